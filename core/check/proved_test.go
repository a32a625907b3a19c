package check_test

import "testing"

// proved are programs of all the languages that are gone through, each run in the
// environments that stand beside it; what it did was read from the kernel.
var proved = []struct{ name, tree, want string }{
	{"node http with layered json config and deep merge", `-- Procfile --
web: node src/main.js
-- package.json --
{"name":"gate","version":"1.0.0","private":true,"engines":{"node":"20.x"}}
-- config/default.json --
{"http":{"host":"127.0.0.1","port":4410},"log":{"level":"info"}}
-- config/production.json --
{"http":{"host":"0.0.0.0"}}
-- src/settings.js --
'use strict';
const fs = require('node:fs');
const path = require('node:path');

function isPlain(x) { return x !== null && typeof x === 'object' && !Array.isArray(x); }

function merge(base, over) {
  const out = { ...base };
  for (const [k, v] of Object.entries(over)) {
    out[k] = isPlain(v) && isPlain(base[k]) ? merge(base[k], v) : v;
  }
  return out;
}

function read(name) {
  const file = path.join(__dirname, '..', 'config', ` + "`" + `${name}.json` + "`" + `);
  if (!fs.existsSync(file)) return {};
  return JSON.parse(fs.readFileSync(file, 'utf8'));
}

const stage = process.env.NODE_ENV || 'development';
const settings = [read('default'), read(stage)].reduce(merge, {});
if (process.env.GATE_HOST) settings.http.host = process.env.GATE_HOST;
if (process.env.PORT) settings.http.port = parseInt(process.env.PORT, 10);

module.exports = Object.freeze(settings);
-- src/main.js --
'use strict';
const http = require('node:http');
const { http: { host, port } } = require('./settings');
const app = http.createServer((req, res) => res.end('gate'));
app.listen({ host, port }, () => console.log(` + "`" + `gate on ${host}:${port}` + "`" + `));
`, ` => loopback 4410
PORT=5123 => loopback 5123
NODE_ENV=production GATE_HOST=0.0.0.0 => any 4410`},
	{"express with a tagged template logger and optional chaining", `-- Procfile --
web: node index.js
-- package.json --
{"name":"log","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"express":"5.3.0"}}
-- lib/log.js --
function log(strings, ...values) {
  const line = strings.reduce((out, s, i) => out + s + (i < values.length ? String(values[i]) : ''), '');
  console.log(line);
  return line;
}
module.exports = { log };
-- index.js --
const express = require('express');
const { log } = require('./lib/log');
const env = process.env;
const wanted = Number.parseInt(env.PORT?.trim() ?? '', 10);
const port = Number.isFinite(wanted) ? wanted : 4321;
const app = express();
app.get('/', (_req, res) => res.json({ ok: true }));
const url = log` + "`" + `listening on ${port}` + "`" + `;
app.listen(port, (err) => { if (err) throw err; log` + "`" + `up: ${url}` + "`" + `; });
`, ` => any 4321
PORT=5200 => any 5200
PORT=abc => any 4321`},
	{"node proxy settings", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"gate","version":"1.0.0","type":"module","private":true,"engines":{"node":"20.x"}}
-- env.mjs --
const defaults = { port: '4700', host: '0.0.0.0' };
export const env = new Proxy(defaults, {
  get(target, name) {
    const key = ` + "`" + `GATE_${String(name).toUpperCase()}` + "`" + `;
    return process.env[key] ?? target[name];
  },
});
-- app.mjs --
import { createServer } from 'node:http';
import { env } from './env.mjs';
createServer((q, r) => r.end('ok')).listen(Number(env.port), env.host);
`, ` => any 4700
GATE_PORT=5333 GATE_HOST=127.0.0.1 => loopback 5333`},
	{"fastify with schema checks by hand", `-- Procfile --
web: node server.js
-- package.json --
{"name":"log","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"fastify":"5.12.8"}}
-- server.js --
const fastify = require('fastify')({ logger: false });
const schema = {
  PORT: { type: 'int', min: 1, max: 65535, default: 4655 },
  HOST: { type: 'string', default: '::' },
};
function load(schema, source) {
  const result = {};
  const problems = [];
  for (const name of Object.keys(schema)) {
    const rule = schema[name];
    const raw = source[name];
    if (raw === undefined || raw === '') { result[name] = rule.default; continue; }
    switch (rule.type) {
      case 'int': {
        const n = Number(raw);
        if (!Number.isInteger(n)) problems.push(` + "`" + `${name} is not a whole number` + "`" + `);
        else if (n < rule.min || n > rule.max) problems.push(` + "`" + `${name} is out of range` + "`" + `);
        else result[name] = n;
        break;
      }
      default:
        result[name] = raw;
    }
  }
  if (problems.length) {
    console.error(problems.join('\n'));
    process.exit(78);
  }
  return result;
}
const { PORT, HOST } = load(schema, process.env);
fastify.get('/', async () => ({ ok: true }));
fastify.listen({ port: PORT, host: HOST }).catch((e) => { console.error(e); process.exit(1); });
`, ` => any 4655
PORT=5001 => any 5001
PORT=70000 => exits`},
	{"hono with dotenv per stage", `-- Procfile --
web: node --import ./boot.mjs server.mjs
-- package.json --
{"name":"dome","version":"1.0.0","type":"module","private":true,"engines":{"node":"20.x"},"dependencies":{"hono":"4.13.19","@hono/node-server":"2.1.9","dotenv":"17.0.0"}}
-- .env.day --
PORT=4801
HOST=127.0.0.1
-- .env.night --
PORT=4802
HOST=0.0.0.0
-- boot.mjs --
import { config } from 'dotenv';
config({ path: ` + "`" + `.env.${process.env.STAGE ?? 'day'}` + "`" + `, quiet: true });
-- server.mjs --
import { Hono } from 'hono';
import { serve } from '@hono/node-server';
const app = new Hono();
app.get('/', (c) => c.text('dome'));
serve({ fetch: app.fetch, port: parseInt(process.env.PORT), hostname: process.env.HOST });
`, ` => loopback 4801
STAGE=night => any 4802
STAGE=night PORT=5066 => any 5066`},
	{"ts with enum and namespace by tsx", `-- Procfile --
web: npx tsx src/index.ts
-- package.json --
{"name":"gate","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"tsx":"4.0.0"}}
-- src/mode.ts --
export enum Mode { Private = 'private', Public = 'public' }
export namespace Modes {
  export function from(text: string | undefined): Mode {
    return (Object.values(Mode) as string[]).includes(text ?? '') ? (text as Mode) : Mode.Private;
  }
  export const ports: Record<Mode, number> = { [Mode.Private]: 4990, [Mode.Public]: 4991 };
}
-- src/index.ts --
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { Mode, Modes } from './mode';
interface Options { host: string; port: number }
class Gate {
  constructor(private readonly options: Readonly<Options>) {}
  start(): void {
    const { host, port } = this.options;
    createServer((_q: IncomingMessage, s: ServerResponse) => { s.end('x'); }).listen(port, host);
  }
}
const mode = Modes.from(process.env.GATE_MODE);
const given = process.env['GATE_PORT'];
new Gate({ host: mode === Mode.Public ? '0.0.0.0' : '127.0.0.1', port: given ? +given : Modes.ports[mode] } satisfies Options).start();
`, ` => loopback 4990
GATE_MODE=public => any 4991
GATE_MODE=public GATE_PORT=5099 => any 5099`},
	{"socket io with options from argv", `-- Procfile --
web: node relay.js --port 4545 --path /live
-- package.json --
{"name":"relay","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"socket.io":"4.8.4"}}
-- relay.js --
const { createServer } = require('http');
const { Server } = require('socket.io');
const argv = process.argv.slice(2);
const opt = (name, fallback) => {
  const i = argv.indexOf(` + "`" + `--${name}` + "`" + `);
  return i !== -1 && argv[i + 1] ? argv[i + 1] : fallback;
};
const http = createServer();
new Server(http, { path: opt('path', '/socket') });
http.listen(process.env.PORT ?? opt('port', 4000));
`, ` => any 4545
PORT=5001 => any 5001`},
	{"python match with sequence and mapping", `-- Procfile --
web: python3 serve.py
-- requirements.txt --

-- serve.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler


class Page(BaseHTTPRequestHandler):
    def do_GET(self):
        self.send_response(200)
        self.end_headers()


def where(text):
    match text.split(":"):
        case ["tcp", host, port]:
            return host, int(port)
        case [port] if port.isdigit():
            return "0.0.0.0", int(port)
        case other:
            raise SystemExit(f"cannot read {other!r}")


if __name__ == "__main__":
    HTTPServer(where(os.environ.get("LISTEN", "4811")), Page).serve_forever()
`, ` => any 4811
LISTEN=tcp:127.0.0.1:5100 => loopback 5100
LISTEN=5101 => any 5101
LISTEN=bad:x:y:z => exits`},
	{"python dataclass config with post init and lru cache", `-- Procfile --
web: python3 -m gate
-- requirements.txt --
aiohttp==3.8.4
-- gate/__init__.py --

-- gate/config.py --
from __future__ import annotations

import os
from dataclasses import dataclass, field
from functools import lru_cache

TRUE = {"1", "true", "yes", "on"}


def flag(name: str, default: bool = False) -> bool:
    raw = os.getenv(name)
    if raw is None:
        return default
    return raw.strip().lower() in TRUE


@dataclass(frozen=True)
class Config:
    port: int = field(default_factory=lambda: int(os.getenv("GATE_PORT", "4822")))
    public: bool = field(default_factory=lambda: flag("GATE_PUBLIC", True))
    host: str = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "host", "0.0.0.0" if self.public else "127.0.0.1")


@lru_cache(maxsize=None)
def config() -> Config:
    return Config()
-- gate/__main__.py --
from aiohttp import web

from .config import config


async def root(request: web.Request) -> web.Response:
    return web.Response(text="gate")


def build() -> web.Application:
    app = web.Application()
    app.add_routes([web.get("/", root)])
    return app


web.run_app(build(), host=config().host, port=config().port, print=None)
`, ` => any 4822
GATE_PORT=5155 GATE_PUBLIC=yes => any 5155
GATE_PUBLIC=0 => loopback 4822`},
	{"flask with config from object by name", `-- Procfile --
web: flask --app scope:create_app run
-- requirements.txt --
Flask==2.2.2
-- scope/__init__.py --
import os

from flask import Flask


def create_app(name=None):
    app = Flask(__name__)
    app.config.from_object(f"scope.config.{name or os.environ.get('SCOPE', 'Development')}")

    @app.get("/")
    def index():
        return "scope"

    return app
-- scope/config.py --
class Base:
    DEBUG = False


class Development(Base):
    NAME = "dev"


class Production(Base):
    NAME = "prod"
`, ` => loopback 5000
FLASK_RUN_PORT=5077 FLASK_RUN_HOST=0.0.0.0 => any 5077
PORT=5078 => loopback 5000`},
	{"fastapi with pydantic settings and prefix", `-- Procfile --
web: python3 run.py
-- requirements.txt --
fastapi==0.92.0
uvicorn==0.17.6
pydantic==1.10.4
-- dome/__init__.py --

-- dome/settings.py --
from pydantic import BaseSettings, Field


class Settings(BaseSettings):
    host: str = "127.0.0.1"
    port: int = Field(4899, ge=1, le=65535)
    workers: int = 1

    class Config:
        env_prefix = "DOME_"


settings = Settings()
-- dome/app.py --
from fastapi import FastAPI

app = FastAPI()


@app.get("/")
def root():
    return {"dome": "open"}
-- run.py --
import uvicorn

from dome.settings import settings

if __name__ == "__main__":
    uvicorn.run("dome.app:app", **settings.dict())
`, ` => loopback 4899
DOME_PORT=5188 => loopback 5188
DOME_PORT=5188 dome_host=0.0.0.0 => any 5188
DOME_PORT=x => exits`},
	{"gunicorn with python config that reads yaml", `-- Procfile --
web: gunicorn -c ops/gunicorn.py web:app
-- requirements.txt --
gunicorn==20.1.0
PyYAML==6.0
-- ops/stages.yaml --
dev:
  host: 127.0.0.1
  port: 4301
  workers: 1
prod:
  host: 0.0.0.0
  port: 4302
  workers: 2
-- ops/gunicorn.py --
import os
import pathlib

import yaml

_here = pathlib.Path(__file__).resolve().parent
_stage = yaml.safe_load((_here / "stages.yaml").read_text())[os.environ.get("STAGE", "dev")]

workers = _stage["workers"]
bind = "{host}:{port}".format(host=_stage["host"], port=os.environ.get("PORT", _stage["port"]))
-- web.py --
def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"web"]
`, ` => loopback 4301
PORT=5201 => loopback 5201
STAGE=prod => any 4302`},
	{"python argparse with subcommands and env defaults", `-- Procfile --
web: python3 -m ctl serve --bind ${ADDRESS:-127.0.0.1}
-- requirements.txt --

-- ctl/__init__.py --

-- ctl/__main__.py --
import argparse
import os
import socketserver
import sys


class Echo(socketserver.StreamRequestHandler):
    def handle(self):
        self.wfile.write(self.rfile.readline())


class Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True


def serve(ns):
    with Server((ns.bind, ns.port), Echo) as server:
        server.serve_forever()


def show(ns):
    print(ns)


def main(argv=None):
    parser = argparse.ArgumentParser(prog="ctl")
    sub = parser.add_subparsers(dest="verb", required=True)
    s = sub.add_parser("serve")
    s.add_argument("--bind", default="127.0.0.1")
    s.add_argument("--port", type=int, default=os.environ.get("CTL_PORT", "4501"))
    s.set_defaults(run=serve)
    v = sub.add_parser("show")
    v.set_defaults(run=show)
    ns = parser.parse_args(argv)
    return ns.run(ns)


sys.exit(main())
`, ` => loopback 4501
CTL_PORT=5301 => loopback 5301
ADDRESS=0.0.0.0 => any 4501`},
	{"go with struct tags by reflection", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.22
-- env/env.go --
package env

import (
	"fmt"
	"os"
	"reflect"
	"strconv"
)

// Fill sets the fields of a struct from the environment.
func Fill(into any) error {
	v := reflect.ValueOf(into).Elem()
	t := v.Type()
	for i := 0; i < t.NumField(); i++ {
		name, def := t.Field(i).Tag.Get("env"), t.Field(i).Tag.Get("default")
		text, ok := os.LookupEnv(name)
		if !ok {
			text = def
		}
		switch v.Field(i).Kind() {
		case reflect.String:
			v.Field(i).SetString(text)
		case reflect.Int:
			n, err := strconv.Atoi(text)
			if err != nil {
				return fmt.Errorf("%s: %w", name, err)
			}
			v.Field(i).SetInt(int64(n))
		}
	}
	return nil
}
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"

	"gate/env"
)

type settings struct {
	Host string ` + "`" + `env:"GATE_HOST" default:"127.0.0.1"` + "`" + `
	Port int    ` + "`" + `env:"GATE_PORT" default:"4601"` + "`" + `
}

func main() {
	var s settings
	if err := env.Fill(&s); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", s.Host, s.Port), http.NotFoundHandler()))
}
`, ` => loopback 4601
GATE_PORT=5401 => loopback 5401
GATE_PORT=zz => exits`},
	{"go with named map types and methods", `-- Procfile --
web: ./scope
-- go.mod --
module scope

go 1.22
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
	"strings"
)

type environment map[string]string

func current() environment {
	e := make(environment)
	for _, kv := range os.Environ() {
		if k, v, ok := strings.Cut(kv, "="); ok {
			e[k] = v
		}
	}
	return e
}

func (e environment) get(name, fallback string) string {
	if v := e[name]; v != "" {
		return v
	}
	return fallback
}

type addresses []string

func (a addresses) first() string {
	for _, x := range a {
		if x != "" {
			return x
		}
	}
	return ""
}

var hosts = map[string]string{"all": "", "local": "localhost"}

func main() {
	e := current()
	host, ok := hosts[e.get("BIND", "local")]
	if !ok {
		log.Fatalf("BIND %q", e["BIND"])
	}
	list := addresses{"", net.JoinHostPort(host, e.get("PORT", "4611"))}
	l, err := net.Listen("tcp", list.first())
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.Serve(l, nil))
}
`, ` => loopback 4611
PORT=5411 => loopback 5411
BIND=all PORT=5412 => any 5412`},
	{"go with functional options and generics", `-- Procfile --
web: ./logbook
-- go.mod --
module logbook

go 1.22
-- main.go --
package main

import (
	stdlog "log"
	"net/http"
	"os"
	"strconv"
)

type number interface{ ~int | ~uint16 }

func env[T any](name string, def T, parse func(string) (T, error)) T {
	s, ok := os.LookupEnv(name)
	if !ok {
		return def
	}
	v, err := parse(s)
	if err != nil {
		return def
	}
	return v
}

func text(s string) (string, error) { return s, nil }

func clamp[N number](n, lo, hi N) N { return max(lo, min(n, hi)) }

type Server struct {
	host string
	port int
}

type Option func(*Server)

func Host(h string) Option { return func(s *Server) { s.host = h } }
func Port(p int) Option    { return func(s *Server) { s.port = p } }

func New(opts ...Option) *Server {
	s := &Server{port: 80}
	for _, o := range opts {
		o(s)
	}
	return s
}

func (s *Server) Addr() string { return s.host + ":" + strconv.Itoa(s.port) }

func main() {
	s := New(Host(env("HOST", "", text)), Port(clamp(env("PORT", 4631, strconv.Atoi), 1024, 65535)))
	stdlog.Fatal((&http.Server{Addr: s.Addr()}).ListenAndServe())
}
`, ` => any 4631
PORT=5431 => any 5431
PORT=5432 HOST=127.0.0.1 => loopback 5432`},
	{"sinatra with environment blocks", `-- Procfile --
web: ruby app.rb
-- Gemfile --
source "https://rubygems.org"
ruby "3.1.2"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"

configure :development do
  set :port, 4731
end

configure :production do
  set :bind, "0.0.0.0"
  set :port, Integer(ENV.fetch("PORT", 4732))
end

get "/" do
  "seen"
end
`, ` => loopback 4731
APP_ENV=production => any 4732
APP_ENV=production PORT=5501 => any 5501`},
	{"ruby settings object with method missing and heredoc", `-- Procfile --
web: ruby bin/gate
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- lib/settings.rb --
require "yaml"

class Settings
  DEFAULTS = YAML.safe_load(<<~YAML)
    host: 0.0.0.0
    port: 4741
  YAML

  def initialize(env = ENV)
    @env = env
  end

  def respond_to_missing?(name, all = false)
    DEFAULTS.key?(name.to_s) || super
  end

  def method_missing(name, *args)
    key = name.to_s
    return super unless DEFAULTS.key?(key)
    value = @env["GATE_#{key.upcase}"]
    return DEFAULTS[key] if value.nil?
    DEFAULTS[key].is_a?(Integer) ? Integer(value, 10) : value
  end
end
-- bin/gate --
#!/usr/bin/env ruby
require "webrick"
require_relative "../lib/settings"
s = Settings.new
server = WEBrick::HTTPServer.new(BindAddress: s.host, Port: s.port, AccessLog: [], Logger: WEBrick::Log.new(File::NULL))
server.mount_proc("/") { |_, res| res.body = "gate" }
trap("TERM") { server.shutdown }
server.start
`, ` => any 4741
GATE_PORT=5511 => any 5511
GATE_PORT=5511 GATE_HOST=127.0.0.1 => loopback 5511`},
	{"ruby optparse and socket", `-- Procfile --
web: ruby echo.rb -p 4761
-- Gemfile --
source "https://rubygems.org"
-- echo.rb --
require "socket"
require "optparse"

options = {host: ENV["HOST"] || "0.0.0.0", port: 2000}
OptionParser.new do |o|
  o.banner = "echo"
  o.on("-p", "--port PORT", Integer) { |v| options[:port] = v }
  o.on("-h HOST", "--host HOST") { |v| options[:host] = v }
end.parse!

server = TCPServer.new(options.fetch(:host), options.fetch(:port))
loop do
  Thread.start(server.accept) do |client|
    client.puts(client.gets)
    client.close
  end
end
`, ` => any 4761
HOST=127.0.0.1 => loopback 4761`},
	{"php loop with break out of two and references", `-- Procfile --
web: php server.php
-- composer.json --
{"name":"observatory/log","require":{"php":">=8.1"}}
-- server.php --
<?php
declare(strict_types=1);

function pick(array $names, array $sources): ?string
{
    $found = null;
    foreach ($names as $name) {
        foreach ($sources as $source) {
            $value = $source[$name] ?? '';
            if ($value !== '') {
                $found = (string) $value;
                break 2;
            }
        }
    }
    return $found;
}

function defaults(array &$into): void
{
    $into['host'] ??= '0.0.0.0';
    $into['port'] ??= 4811;
}

$settings = [];
$port = pick(['PORT', 'HTTP_PORT'], [getenv(), $_SERVER]);
if ($port !== null) {
    $settings['port'] = (int) $port;
}
defaults($settings);
['host' => $host, 'port' => $port] = $settings;

$server = stream_socket_server("tcp://{$host}:{$port}", $errno, $error);
if ($server === false) {
    fwrite(STDERR, "$error\n");
    exit(1);
}
while ($c = @stream_socket_accept($server, -1)) {
    fwrite($c, "HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\nok");
    fclose($c);
}
`, ` => any 4811
PORT=5601 => any 5601
HTTP_PORT=5602 => any 5602`},
	{"php enum config and built in server", `-- Procfile --
web: php -S "${HOST:-0.0.0.0}:${PORT:-4831}" -t public public/router.php
-- composer.json --
{"name":"observatory/gate","require":{"php":">=8.1"}}
-- public/router.php --
<?php
if (is_file(__DIR__ . parse_url($_SERVER['REQUEST_URI'], PHP_URL_PATH))) return false;
echo 'gate';
`, ` => any 4831
PORT=5621 => any 5621
HOST=localhost PORT=5622 => loopback 5622`},
	{"java enum with methods of their own", `-- Procfile --
web: java -cp out Gate
-- src/Stage.java --
import java.util.Locale;

enum Stage {
    DEV {
        @Override String host() { return "127.0.0.1"; }
        @Override int port() { return 4911; }
    },
    LIVE {
        @Override String host() { return "0.0.0.0"; }
    };

    abstract String host();
    int port() { return 4912; }

    static Stage current() {
        String s = System.getenv().getOrDefault("GATE_STAGE", "dev");
        return valueOf(s.toUpperCase(Locale.ROOT));
    }
}
-- src/Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Optional;

public class Gate {
    record Bind(String host, int port) {
        Bind {
            if (port < 0 || port > 65535) throw new IllegalArgumentException("port " + port);
        }
        InetSocketAddress address() { return new InetSocketAddress(host, port); }
        Bind withPort(int other) { return new Bind(host, other); }
    }

    public static void main(String[] args) throws Exception {
        Stage stage = Stage.current();
        Bind bind = Optional.ofNullable(System.getenv("PORT"))
            .map(String::trim)
            .filter(s -> !s.isEmpty())
            .map(Integer::valueOf)
            .map(p -> new Bind(stage.host(), stage.port()).withPort(p))
            .orElseGet(() -> new Bind(stage.host(), stage.port()));
        HttpServer server = HttpServer.create(bind.address(), 0);
        server.createContext("/", x -> { x.sendResponseHeaders(200, -1); x.close(); });
        server.start();
    }
}
`, ` => loopback 4911
GATE_STAGE=live => any 4912
GATE_STAGE=live PORT=5701 => any 5701`},
	{"java nested classes and interfaces in a method", `-- Procfile --
web: java src/Relay.java
-- src/Relay.java --
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;

public class Relay {
    public static void main(String[] args) throws IOException {
        record Where(String host, int port) {}
        interface Parser { Where parse(String s); }
        class HostPort implements Parser {
            public Where parse(String s) {
                int i = s.lastIndexOf(':');
                return i < 0 ? new Where("0.0.0.0", Integer.parseInt(s)) : new Where(s.substring(0, i), Integer.parseInt(s.substring(i + 1)));
            }
        }
        String text = System.getenv("RELAY");
        if (text == null || text.isBlank()) text = "localhost:4921";
        Where w = new HostPort().parse(text);
        try (ServerSocket ss = new ServerSocket(w.port(), 50, InetAddress.getByName(w.host()))) {
            while (true) {
                try (Socket s = ss.accept()) { s.getOutputStream().write("ok".getBytes()); }
            }
        }
    }
}
`, ` => loopback 4921
RELAY=127.0.0.1:5711 => loopback 5711
RELAY=5712 => any 5712`},
	{"java with properties and system property over env", `-- Procfile --
web: java -Dgate.port=${PORT:-4931} -cp out gate.Main
-- src/gate/gate.properties --
# where the gate listens
gate.bind = 0.0.0.0
gate.port = 4000
-- src/gate/Config.java --
package gate;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Properties;

final class Config {
    private final Properties props = new Properties();

    Config(String resource) {
        try (InputStream in = Config.class.getResourceAsStream(resource)) {
            if (in == null) throw new IllegalStateException("no " + resource);
            props.load(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String text(String key) {
        String env = System.getenv(key.replace('.', '_').toUpperCase());
        if (env != null) return env;
        return System.getProperty(key, props.getProperty(key));
    }

    int number(String key) { return Integer.parseInt(text(key)); }
}
-- src/gate/Main.java --
package gate;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public final class Main {
    public static void main(String... args) throws Exception {
        var config = new Config("gate.properties");
        var server = HttpServer.create(new InetSocketAddress(config.text("gate.bind"), config.number("gate.port")), 0);
        server.start();
    }
}
`, ` => any 4931
PORT=5721 => any 5721
GATE_BIND=127.0.0.1 => loopback 4931`},
	{"deno with flags and permission", `-- Procfile --
web: deno run --allow-net --allow-env main.ts --port=4941
-- deno.json --
{"tasks":{"start":"deno run --allow-net --allow-env main.ts"}}
-- main.ts --
const flags = new Map<string, string>(
  Deno.args.filter((a) => a.startsWith("--")).map((a) => a.slice(2).split("=", 2) as [string, string]),
);
const port = Number(Deno.env.get("PORT") ?? flags.get("port") ?? "8000");
Deno.serve({ port, hostname: flags.get("host") ?? "0.0.0.0", onListen() {} }, () => new Response("ok"));
`, ` => any 4941
PORT=5731 => any 5731`},
	{"deno with json import and class fields", `-- Procfile --
web: deno run -A src/app.ts
-- deno.json --
{"imports":{"~/":"./src/"}}
-- src/config.json --
{"dev":{"hostname":"127.0.0.1","port":4951},"live":{"hostname":"0.0.0.0","port":4952}}
-- src/config.ts --
import raw from "~/config.json" with { type: "json" };
export type Stage = keyof typeof raw;
export class Config {
  static #instance?: Config;
  readonly stage: Stage;
  private constructor() {
    const s = Deno.env.get("DENO_STAGE");
    this.stage = s !== undefined && s in raw ? (s as Stage) : "dev";
  }
  static get instance() {
    return (this.#instance ??= new Config());
  }
  get listen() {
    return raw[this.stage];
  }
}
-- src/app.ts --
import { Config } from "~/config.ts";
const { hostname, port } = Config.instance.listen;
Deno.serve({ hostname, port }, (_req) => new Response("dome"));
`, ` => loopback 4951
DENO_STAGE=live => any 4952`},
	{"bun with serve and environment", `-- Procfile --
web: bun run src/index.ts
-- package.json --
{"name":"dome","module":"src/index.ts","type":"module","private":true}
-- src/index.ts --
const { env } = Bun;
const server = Bun.serve({
  hostname: env.HOSTNAME_BIND || "127.0.0.1",
  routes: { "/": new Response("ok") },
  fetch() { return new Response("not found", { status: 404 }); },
});
console.log(String(server.url));
`, ` => loopback 3000
BUN_PORT=5741 => loopback 5741
PORT=5742 => loopback 5742`},
	{"bun script with start in package json", `-- Procfile --
web: bun run start
-- package.json --
{"name":"dome","type":"module","private":true,"scripts":{"start":"bun server.js"}}
-- server.js --
const int = (s) => { const n = Number(s); if (Number.isNaN(n)) throw new TypeError(` + "`" + `not a number: ${s}` + "`" + `); return n; };
export const port = int(process.env.LISTEN_PORT ?? process.env.PORT ?? 4961);
Bun.serve({ port, fetch: () => new Response("x") });
`, ` => any 4961
PORT=5751 => any 5751
LISTEN_PORT=5752 => any 5752`},
	{"shell start that computes", `-- Procfile --
web: sh start.sh
-- package.json --
{"name":"dome","private":true,"engines":{"node":"20.x"}}
-- start.sh --
#!/bin/sh
set -eu
: "${BASE_PORT:=4900}"
if [ -z "${PORT:-}" ]; then
  PORT=$((BASE_PORT + 71))
fi
export PORT
exec node server.js
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT);
`, ` => any 4971
BASE_PORT=5700 => any 5771
PORT=5761 => any 5761`},
	{"django settings and runserver in manage", `-- Procfile --
web: python3 manage.py runserver ${HOST:-0.0.0.0}:${PORT:-8300} --noreload
-- requirements.txt --
Django==3.2.25
-- manage.py --
#!/usr/bin/env python3
import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "site_.settings")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)
-- site_/__init__.py --

-- site_/settings.py --
SECRET_KEY = "x"
DEBUG = True
ALLOWED_HOSTS = []
ROOT_URLCONF = "site_.urls"
INSTALLED_APPS = []
-- site_/urls.py --
urlpatterns = []
`, ` => any 8300
PORT=5781 => any 5781
HOST=127.0.0.1 => loopback 8300`},
	{"uvicorn factory by command", `-- Procfile --
web: uvicorn --factory gate.app:make --host 0.0.0.0 --port ${PORT:-4981}
-- requirements.txt --
uvicorn==0.17.6
starlette==0.26.1
-- gate/__init__.py --

-- gate/app.py --
from starlette.applications import Starlette
from starlette.responses import PlainTextResponse
from starlette.routing import Route


def make():
    return Starlette(routes=[Route("/", lambda r: PlainTextResponse("x"))])
`, ` => any 4981
PORT=5791 => any 5791
PORT=5792 UVICORN_HOST=127.0.0.1 => any 5792`},
	{"koa with layered json files and stage list", `-- Procfile --
web: node index.js
-- package.json --
{"name":"dome","version":"1.0.0","private":true,"dependencies":{"koa":"3.3.0"}}
-- conf/base.json --
{"listen":{"host":"0.0.0.0","port":4320}}
-- conf/night.json --
{"listen":{"port":4321}}
-- index.js --
const { readFileSync, existsSync } = require('fs');
const { join } = require('path');
const Koa = require('koa');

const layers = ['base', process.env.STAGE].filter(Boolean).map((n) => join(__dirname, 'conf', n + '.json')).filter(existsSync);
const conf = layers.map((f) => JSON.parse(readFileSync(f, 'utf8'))).reduce((all, one) => {
  for (const k in one) all[k] = Object.assign({}, all[k], one[k]);
  return all;
}, {});
const app = new Koa();
app.use((ctx) => { ctx.body = 'dome'; });
const { host, port } = conf.listen;
app.listen(process.env.PORT ? ~~process.env.PORT : port, host);
`, ` => any 4320
STAGE=night => any 4321
STAGE=dusk PORT=5033 => any 5033`},
	{"hono on node with class and static create", `-- Procfile --
web: node server.js
-- package.json --
{"name":"log","version":"1.0.0","private":true,"type":"module","dependencies":{"hono":"4.13.19","@hono/node-server":"2.1.9"}}
-- server.js --
import { serve } from '@hono/node-server';
import { Hono } from 'hono';

class Server {
  #app = new Hono();
  #options;
  static create(overrides = {}) {
    return new Server({ port: 4330, hostname: '0.0.0.0', ...overrides });
  }
  constructor(options) {
    this.#options = options;
    this.#app.get('/', (c) => c.json({ at: this.url }));
  }
  get url() { return ` + "`" + `http://${this.#options.hostname}:${this.#options.port}` + "`" + `; }
  start(done) { return serve({ fetch: this.#app.fetch, ...this.#options }, done); }
}

const overrides = {};
if ('PORT' in process.env) overrides.port = Number(process.env.PORT);
Server.create(overrides).start(() => console.log('up'));
`, ` => any 4330
PORT=5044 => any 5044`},
	{"socket.io standalone with cors list", `-- Procfile --
web: node live.js
-- package.json --
{"name":"live","version":"1.0.0","private":true,"dependencies":{"socket.io":"4.8.4"}}
-- live.js --
const { Server } = require('socket.io');
const origins = (process.env.ORIGINS || '').split(',').map((s) => s.trim()).filter(Boolean);
const io = new Server({ cors: { origin: origins.length ? origins : '*' } });
io.on('connection', (s) => s.emit('hi'));
io.listen(+process.env.LIVE_PORT || 4340);
`, ` => any 4340
LIVE_PORT=5055 => any 5055`},
	{"node cluster with fallback to one", `-- Procfile --
web: node main.js
-- package.json --
{"name":"gate","version":"1.0.0","private":true}
-- main.js --
const cluster = require('node:cluster');
const http = require('node:http');
const workers = parseInt(process.env.WORKERS, 10) || 0;
function work() {
  http.createServer((q, s) => s.end(String(process.pid))).listen(process.env.PORT || 4350);
}
if (workers > 0 && cluster.isPrimary) {
  for (let i = 0; i < workers; i++) cluster.fork();
  cluster.on('exit', () => cluster.fork());
} else {
  work();
}
`, ` => any 4350
WORKERS=2 PORT=5066 => any 5066`},
	{"node https with fallback to http", `-- Procfile --
web: node serve.js
-- package.json --
{"name":"gate","version":"1.0.0","private":true}
-- serve.js --
const http = require('http');
const https = require('https');
const fs = require('fs');
const handler = (req, res) => res.end('x');
const tls = process.env.TLS !== 'off' && fs.existsSync('certs/gate.key');
const server = tls
  ? https.createServer({ key: fs.readFileSync('certs/gate.key'), cert: fs.readFileSync('certs/gate.crt') }, handler)
  : http.createServer(handler);
const port = process.env.PORT ? Number(process.env.PORT) : tls ? 4443 : 4360;
server.listen({ port, host: '0.0.0.0', backlog: 100 });
`, ` => any 4360
TLS=off PORT=5077 => any 5077`},
	{"ts express with zod like builder", `-- Procfile --
web: npx tsx server.ts
-- package.json --
{"name":"gate","version":"1.0.0","private":true,"type":"module","dependencies":{"express":"5.3.0","tsx":"4.0.0"}}
-- lib/schema.ts --
type Parser<T> = { parse(raw: string | undefined): T; default(value: T): Parser<T> };
const make = <T>(read: (raw: string) => T, fallback?: T): Parser<T> => ({
  parse(raw) {
    if (raw === undefined) {
      if (fallback === undefined) throw new Error('missing');
      return fallback;
    }
    return read(raw);
  },
  default(value) { return make(read, value); },
});
export const text = () => make<string>((r) => r);
export const int = () => make<number>((r) => {
  const n = Number(r);
  if (!Number.isInteger(n)) throw new TypeError(` + "`" + `not a number: ${r}` + "`" + `);
  return n;
});
export function shape<S extends Record<string, Parser<any>>>(schema: S) {
  return (source: NodeJS.ProcessEnv) =>
    Object.fromEntries(Object.entries(schema).map(([k, p]) => [k, p.parse(source[k])])) as { [K in keyof S]: ReturnType<S[K]['parse']> };
}
-- server.ts --
import express from 'express';
import { int, shape, text } from './lib/schema';
const env = shape({ PORT: int().default(4370), HOST: text().default('0.0.0.0') })(process.env);
const app = express();
app.get('/', (_req, res) => { res.send('ok'); });
app.listen(env.PORT, env.HOST);
`, ` => any 4370
PORT=5088 HOST=127.0.0.1 => loopback 5088
PORT=none => exits`},
	{"flask script with config class by environment", `-- Procfile --
web: python app.py
-- requirements.txt --
Flask==2.2.2
-- config.py --
import os


class Config:
    HOST = "127.0.0.1"
    PORT = 4410
    DEBUG = False

    @classmethod
    def load(cls):
        return {k: getattr(cls, k) for k in dir(cls) if k.isupper()}


class Development(Config):
    DEBUG = False


class Production(Config):
    HOST = "0.0.0.0"
    PORT = int(os.environ.get("PORT", 4411))


by_name = {c.__name__.lower(): c for c in (Development, Production)}
-- app.py --
import os

from flask import Flask

import config

name = os.environ.get("FLASK_ENVIRONMENT", "development")
app = Flask(__name__)
app.config.update(config.by_name[name].load())


@app.route("/")
def index():
    return "gate"


if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"], debug=app.config["DEBUG"])
`, ` => loopback 4410
FLASK_ENVIRONMENT=production PORT=5101 => any 5101`},
	{"fastapi with typer cli", `-- Procfile --
web: python -m dome serve --port ${PORT:-4420}
-- requirements.txt --
fastapi==0.92.0
uvicorn==0.17.6
typer==0.7.0
-- dome/__init__.py --

-- dome/__main__.py --
import typer
import uvicorn
from fastapi import FastAPI

app = FastAPI()
cli = typer.Typer()


@app.get("/")
def root():
    return {"dome": True}


@cli.command()
def serve(host: str = typer.Option("0.0.0.0", envvar="DOME_HOST"), port: int = 8000):
    uvicorn.run(app, host=host, port=port, log_level="warning")


@cli.command()
def version():
    print("1")


if __name__ == "__main__":
    cli()
`, ` => any 4420
PORT=5112 => any 5112
DOME_HOST=127.0.0.1 => loopback 4420`},
	{"aiohttp with yaml settings and merge", `-- Procfile --
web: python3 -m scope
-- requirements.txt --
aiohttp==3.8.4
PyYAML==6.0
-- default.yaml --
http:
  host: 127.0.0.1
  port: 4430
-- prod.yaml --
http:
  host: 0.0.0.0
-- scope/__init__.py --

-- scope/__main__.py --
import os
from pathlib import Path

import yaml
from aiohttp import web

BASE = Path(__file__).parent.parent


def merge(a: dict, b: dict) -> dict:
    out = dict(a)
    for key, value in b.items():
        if isinstance(value, dict) and isinstance(out.get(key), dict):
            out[key] = merge(out[key], value)
        else:
            out[key] = value
    return out


def load() -> dict:
    with open(BASE / "default.yaml") as f:
        settings = yaml.safe_load(f)
    extra = os.getenv("SCOPE_CONFIG")
    if extra:
        settings = merge(settings, yaml.safe_load((BASE / extra).read_text()))
    if (port := os.getenv("SCOPE_PORT")) is not None:
        settings["http"]["port"] = int(port)
    return settings


async def hello(_):
    return web.Response(text="scope")


def main():
    app = web.Application()
    app.router.add_get("/", hello)
    http = load()["http"]
    web.run_app(app, **http, print=None)


main()
`, ` => loopback 4430
SCOPE_CONFIG=prod.yaml => any 4430
SCOPE_PORT=5123 => loopback 5123`},
	{"tornado with options from the environment", `-- Procfile --
web: python3 server.py --port=4440
-- requirements.txt --
tornado==6.2
-- server.py --
import os

import tornado.ioloop
import tornado.web
from tornado.options import define, options, parse_command_line

define("port", default=8888, type=int)
define("address", default=os.environ.get("TORNADO_ADDRESS", "0.0.0.0"))


class Main(tornado.web.RequestHandler):
    def get(self):
        self.write("ok")


if __name__ == "__main__":
    parse_command_line()
    tornado.web.Application([(r"/", Main)]).listen(options.port, options.address)
    tornado.ioloop.IOLoop.current().start()
`, ` => any 4440
TORNADO_ADDRESS=127.0.0.1 => loopback 4440`},
	{"waitress serve command with callable", `-- Procfile --
web: waitress-serve --listen=*:${PORT:-4450} --call gate:create_app
-- requirements.txt --
waitress==2.1.2
Flask==2.2.2
-- gate.py --
from flask import Flask


def create_app():
    app = Flask(__name__)
    app.add_url_rule("/", view_func=lambda: "ok")
    return app
`, ` => any 4450
PORT=5134 => any 5134`},
	{"gunicorn conf with env helper and threads", `-- Procfile --
web: gunicorn gate.wsgi
-- requirements.txt --
gunicorn==20.1.0
-- gunicorn.conf.py --
import multiprocessing
import os


def env(name, default, cast=str):
    value = os.environ.get(name)
    return cast(value) if value else default


bind = env("WEB_BIND", f"0.0.0.0:{env('PORT', 4460, int)}")
workers = min(2, env("WEB_CONCURRENCY", multiprocessing.cpu_count() * 2 + 1, int))
threads = 2
-- gate/__init__.py --

-- gate/wsgi.py --
def application(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
`, ` => any 4460
WEB_BIND=127.0.0.1:5145 => loopback 5145
PORT=5146 WEB_CONCURRENCY=1 => any 5146`},
	{"uvicorn server object with config", `-- Procfile --
web: python3 run.py
-- requirements.txt --
uvicorn==0.17.6
-- run.py --
import asyncio
import os

import uvicorn


async def app(scope, receive, send):
    if scope["type"] != "http":
        return
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": b"ok"})


def address():
    listen = os.environ.get("GATE_LISTEN", "0.0.0.0:4470")
    host, _, port = listen.rpartition(":")
    return {"host": host or "0.0.0.0", "port": int(port)}


async def main():
    server = uvicorn.Server(uvicorn.Config(app, lifespan="off", **address()))
    await server.serve()


if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 4470
UVICORN_PORT=5151 => any 4470
GATE_LISTEN=127.0.0.1:5152 => loopback 5152`},
	{"python http server subclass with context", `-- Procfile --
web: python3 serve.py
-- serve.py --
import contextlib
import functools
import http.server
import os
import socket

ROOT = os.path.dirname(os.path.abspath(__file__))


class DualStack(http.server.ThreadingHTTPServer):
    def server_bind(self):
        with contextlib.suppress(Exception):
            self.socket.setsockopt(socket.IPPROTO_IPV6, socket.IPV6_V6ONLY, 0)
        return super().server_bind()


handler = functools.partial(http.server.SimpleHTTPRequestHandler, directory=ROOT)
port = int(os.environ.get("SERVE_PORT", "4480"), 0)
with DualStack(("", port), handler) as httpd:
    try:
        httpd.serve_forever()
    except KeyboardInterrupt:
        pass
`, ` => any 4480
SERVE_PORT=5161 => any 5161
SERVE_PORT=0x1431 => any 5169`},
	{"django asgi by daphne-like uvicorn command", `-- Procfile --
web: uvicorn night.asgi:application --host ${HOST:-::} --port $PORT
-- requirements.txt --
Django==3.2.25
uvicorn==0.17.6
-- manage.py --
import os, sys
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "night.settings")
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- night/__init__.py --

-- night/settings.py --
SECRET_KEY = "k"
ALLOWED_HOSTS = ["night.example"]
ROOT_URLCONF = "night.urls"
ASGI_APPLICATION = "night.asgi.application"
-- night/urls.py --
urlpatterns = []
-- night/asgi.py --
import os
from django.core.asgi import get_asgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "night.settings")
application = get_asgi_application()
`, ` => exits
PORT=5171 => any 5171
PORT=5172 HOST=127.0.0.1 => loopback 5172`},
	{"go config package with env tags by generics", `-- Procfile --
web: ./bin/gate
-- go.mod --
module gate

go 1.23
-- internal/config/config.go --
package config

import (
	"errors"
	"fmt"
	"net"
	"os"
	"strconv"
	"time"
)

type HTTP struct {
	Host    string
	Port    int
	Timeout time.Duration
}

func (h HTTP) Addr() string { return net.JoinHostPort(h.Host, strconv.Itoa(h.Port)) }

type Config struct {
	HTTP HTTP
}

type loader struct {
	prefix string
	errs   []error
}

func get[T any](l *loader, name string, def T, parse func(string) (T, error)) T {
	raw, ok := os.LookupEnv(l.prefix + name)
	if !ok {
		return def
	}
	v, err := parse(raw)
	if err != nil {
		l.errs = append(l.errs, fmt.Errorf("%s%s: %w", l.prefix, name, err))
	}
	return v
}

func Load() (*Config, error) {
	l := &loader{prefix: "GATE_"}
	c := &Config{HTTP: HTTP{
		Host:    get(l, "HTTP_HOST", "0.0.0.0", func(s string) (string, error) { return s, nil }),
		Port:    get(l, "HTTP_PORT", 4510, strconv.Atoi),
		Timeout: get(l, "HTTP_TIMEOUT", 5*time.Second, time.ParseDuration),
	}}
	if err := errors.Join(l.errs...); err != nil {
		return nil, err
	}
	return c, nil
}
-- cmd/gate/main.go --
package main

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"os"
	"os/signal"

	"gate/internal/config"
)

func main() {
	if err := run(context.Background()); err != nil {
		slog.Error("gate", "err", err)
		os.Exit(1)
	}
}

func run(ctx context.Context) error {
	ctx, stop := signal.NotifyContext(ctx, os.Interrupt)
	defer stop()
	cfg, err := config.Load()
	if err != nil {
		return err
	}
	mux := http.NewServeMux()
	mux.HandleFunc("GET /", func(w http.ResponseWriter, r *http.Request) { w.Write([]byte("gate")) })
	srv := &http.Server{Addr: cfg.HTTP.Addr(), Handler: mux, ReadHeaderTimeout: cfg.HTTP.Timeout}
	errc := make(chan error, 1)
	go func() { errc <- srv.ListenAndServe() }()
	select {
	case err := <-errc:
		if !errors.Is(err, http.ErrServerClosed) {
			return err
		}
	case <-ctx.Done():
		return srv.Shutdown(context.Background())
	}
	return nil
}
`, ` => any 4510
GATE_HTTP_PORT=5201 => any 5201
GATE_HTTP_HOST=127.0.0.1 GATE_HTTP_PORT=5202 => loopback 5202`},
	{"go gin with flags and env", `-- Procfile --
web: ./relay -port 4520
-- go.mod --
module relay

go 1.23

require github.com/gin-gonic/gin v1.10.0
-- main.go --
package main

import (
	"flag"
	"fmt"
	"os"

	"github.com/gin-gonic/gin"
)

func env(k, d string) string {
	if v := os.Getenv(k); v != "" {
		return v
	}
	return d
}

func main() {
	host := flag.String("host", env("HOST", "0.0.0.0"), "host")
	port := flag.Int("port", 8080, "port")
	flag.Parse()
	r := gin.New()
	r.GET("/", func(c *gin.Context) { c.String(200, "relay") })
	if err := r.Run(fmt.Sprintf("%s:%d", *host, *port)); err != nil {
		panic(err)
	}
}
`, ` => any 4520
HOST=127.0.0.1 => loopback 4520
GIN_MODE=release PORT=5212 => any 4520`},
	{"sinatra modular run with settings", `-- Procfile --
web: ruby gate.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "webrick"
-- gate.rb --
require "sinatra/base"

class Gate < Sinatra::Base
  set :server, "webrick"
  set :port, ENV.fetch("GATE_PORT", 4610).to_i
  set :bind, production? ? "0.0.0.0" : "localhost"

  get("/") { "gate" }

  run! if app_file == $0
end
`, ` => loopback 4610
GATE_PORT=5231 => loopback 5231
RACK_ENV=production => any 4610`},
	{"ruby rack app with config.ru and puma arguments", `-- Procfile --
web: puma -b tcp://${HOST:-0.0.0.0}:${PORT:-4620} config.ru
-- Gemfile --
source "https://rubygems.org"
gem "puma"
gem "rack"
-- config.ru --
app = proc { |env| [200, { "content-type" => "text/plain" }, ["ok"]] }
run app
`, ` => any 4620
PORT=5241 HOST=127.0.0.1 => loopback 5241`},
	{"ruby socket server with config module", `-- Procfile --
web: ruby -Ilib bin/relay
-- lib/relay/config.rb --
require "ostruct"

module Relay
  DEFAULTS = { host: "0.0.0.0", port: 4630 }.freeze

  class << self
    def config
      @config ||= begin
        given = DEFAULTS.keys.each_with_object({}) do |key, all|
          value = ENV["RELAY_#{key.to_s.upcase}"]
          next if value.nil? || value.empty?
          all[key] = DEFAULTS[key].is_a?(Integer) ? Integer(value) : value
        end
        OpenStruct.new(DEFAULTS.merge(given))
      end
    end
  end
end
-- bin/relay --
#!/usr/bin/env ruby
require "socket"
require "relay/config"

server = TCPServer.new(Relay.config.host, Relay.config.port)
loop { server.accept.close }
`, ` => any 4630
RELAY_PORT=5251 RELAY_HOST=127.0.0.1 => loopback 5251
RELAY_PORT=high => exits`},
	{"php front controller on the built-in server by composer script", `-- Procfile --
web: php -S 0.0.0.0:${PORT:-4710} -t web
-- composer.json --
{"name":"observatory/gate","require":{"php":">=8.1"},"scripts":{"serve":"php -S 0.0.0.0:4710 -t web"}}
-- web/index.php --
<?php
echo json_encode(['ok' => true]);
`, ` => any 4710
PORT=5261 => any 5261`},
	{"php server with dotenv file and class", `-- Procfile --
web: php bin/server.php
-- composer.json --
{"name":"observatory/gate","require":{"php":">=8.1"}}
-- .env --
# local
GATE_HOST="127.0.0.1"
GATE_PORT=4720
-- bin/server.php --
<?php
declare(strict_types=1);

final class Env
{
    /** @var array<string,string> */
    private array $values = [];

    public static function fromFile(string $file): self
    {
        $env = new self();
        foreach (file($file, FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) ?: [] as $line) {
            $line = trim($line);
            if ($line === '' || str_starts_with($line, '#')) {
                continue;
            }
            [$name, $value] = array_map('trim', explode('=', $line, 2));
            $env->values[$name] = trim($value, '"\'');
        }
        return $env;
    }

    public function get(string $name, ?string $default = null): string
    {
        $real = getenv($name);
        if ($real !== false) {
            return $real;
        }
        return $this->values[$name] ?? $default ?? throw new RuntimeException("$name is not set");
    }
}

$env = Env::fromFile(__DIR__ . '/../.env');
$address = sprintf('tcp://%s:%d', $env->get('GATE_HOST'), (int) $env->get('GATE_PORT'));
$socket = stream_socket_server($address, $code, $message) ?: exit("$message\n");
while (true) {
    $client = @stream_socket_accept($socket, 3600);
    if ($client) {
        fwrite($client, "HTTP/1.1 204 No Content\r\n\r\n");
        fclose($client);
    }
}
`, ` => loopback 4720
GATE_PORT=5271 => loopback 5271`},
	{"java http server with config record and map", `-- Procfile --
web: java -cp out gate.Main
-- src/gate/Config.java --
package gate;

import java.util.Map;
import java.util.function.Function;

public record Config(String host, int port) {
    public Config {
        if (port < 1 || port > 65535) {
            throw new IllegalArgumentException("port out of range: " + port);
        }
    }

    static Config from(Map<String, String> env) {
        Function<String, String> text = name -> {
            String v = env.get("GATE_" + name);
            return v == null || v.isBlank() ? null : v.strip();
        };
        String port = text.apply("PORT");
        String host = text.apply("HOST");
        return new Config(host == null ? "0.0.0.0" : host, port == null ? 4810 : Integer.parseInt(port));
    }
}
-- src/gate/Main.java --
package gate;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.concurrent.Executors;

public class Main {
    public static void main(String[] args) throws IOException {
        Config config = Config.from(System.getenv());
        HttpServer server = HttpServer.create(new InetSocketAddress(config.host(), config.port()), 0);
        server.createContext("/", exchange -> {
            byte[] body = "gate".getBytes();
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.setExecutor(Executors.newFixedThreadPool(2));
        server.start();
    }
}
`, ` => any 4810
GATE_PORT=5281 => any 5281
GATE_PORT=99999 => exits`},
	{"java server socket by arguments", `-- Procfile --
web: java src/Relay.java --port ${RELAY_PORT:-4820} --loopback
-- src/Relay.java --
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;

public class Relay {
    static int port = 9000;
    static boolean loopback;

    static void parse(String[] argv) {
        Deque<String> args = new ArrayDeque<>(Arrays.asList(argv));
        while (!args.isEmpty()) {
            String a = args.pop();
            switch (a) {
                case "--port":
                    port = Integer.parseInt(args.pop());
                    break;
                case "--loopback":
                    loopback = true;
                    break;
                default:
                    throw new IllegalArgumentException(a);
            }
        }
    }

    public static void main(String[] argv) throws Exception {
        parse(argv);
        ServerSocket s = new ServerSocket();
        s.setReuseAddress(true);
        s.bind(loopback ? new InetSocketAddress(InetAddress.getLoopbackAddress(), port) : new InetSocketAddress(port));
        while (true) s.accept().close();
    }
}
`, ` => loopback 4820
RELAY_PORT=5291 => loopback 5291`},
	{"deno with layered settings", `-- Procfile --
web: deno run --allow-net --allow-env --allow-read main.ts
-- deno.json --
{"name":"gate"}
-- settings.json --
{"gate":{"host":"0.0.0.0","port":4910}}
-- main.ts --
interface Settings { host: string; port: number }
const file: { gate: Settings } = JSON.parse(await Deno.readTextFile(new URL("./settings.json", import.meta.url)));
const env = Deno.env.toObject();
const pick = <K extends keyof Settings>(k: K): Settings[K] => {
  const raw = env[` + "`" + `GATE_${k.toUpperCase()}` + "`" + `];
  if (raw === undefined) return file.gate[k];
  return (typeof file.gate[k] === "number" ? Number(raw) : raw) as Settings[K];
};
Deno.serve({ hostname: pick("host"), port: pick("port") }, () => new Response("gate"));
`, ` => any 4910
GATE_PORT=5301 => any 5301
GATE_HOST=127.0.0.1 => loopback 4910`},
	{"deno plain serve with handler object", `-- Procfile --
web: deno serve --port ${PORT:-4920} --host 0.0.0.0 app.ts
-- deno.json --
{}
-- app.ts --
export default {
  fetch(_req: Request): Response {
    return new Response("ok");
  },
};
`, ` => any 4920
PORT=5311 => any 5311`},
	{"bun with config import and defaults", `-- Procfile --
web: bun src/main.ts
-- package.json --
{"name":"scope","type":"module","private":true}
-- src/stages.json --
{"dev":{"hostname":"127.0.0.1","port":4930},"live":{"hostname":"0.0.0.0","port":4931}}
-- src/main.ts --
import stages from "./stages.json";
const stage = (Bun.env.STAGE ?? "dev") as keyof typeof stages;
const { hostname, port } = stages[stage];
Bun.serve({ hostname, port: Number(process.env.PORT || port), fetch: () => new Response("scope") });
`, ` => loopback 4930
PORT=5321 => loopback 5321
STAGE=live => any 4931`},
	{"bun export default with port", `-- Procfile --
web: bun run index.ts
-- package.json --
{"name":"scope","private":true}
-- index.ts --
const port = parseInt(process.env.APP_PORT ?? "4940");
export default { port, hostname: "127.0.0.1", fetch() { return new Response("x"); } };
`, ` => loopback 4940
APP_PORT=5331 => loopback 5331`},
	{"asyncio streams with dataclass settings", `-- Procfile --
web: python3 -m relay
-- relay/__init__.py --

-- relay/settings.py --
import dataclasses
import os
import re


@dataclasses.dataclass(slots=True, kw_only=True)
class Settings:
    host: str = "127.0.0.1"
    port: int = 4950

    @classmethod
    def from_env(cls, environ=os.environ):
        bind = environ.get("RELAY_BIND")
        if bind is None:
            return cls()
        m = re.fullmatch(r"(?P<host>[\w.]+):(?P<port>\d{1,5})", bind)
        if not m:
            raise ValueError(f"RELAY_BIND: {bind!r}")
        return cls(host=m["host"], port=int(m["port"]))
-- relay/__main__.py --
import asyncio

from relay.settings import Settings


async def handle(reader, writer):
    data = await reader.read(100)
    writer.write(data)
    await writer.drain()
    writer.close()


async def main(settings: Settings):
    server = await asyncio.start_server(handle, settings.host, settings.port)
    async with server:
        await server.serve_forever()


asyncio.run(main(Settings.from_env()))
`, ` => loopback 4950
RELAY_BIND=0.0.0.0:5341 => any 5341
RELAY_BIND=bad => exits`},
	{"bottle with environment and run", `-- Procfile --
web: python3 bottled.py
-- requirements.txt --
bottle==0.12.23
-- bottled.py --
from os import environ as env

import bottle


@bottle.get("/")
def index():
    return "ok"


options = {k[7:].lower(): v for k, v in env.items() if k.startswith("BOTTLE_")}
options.setdefault("port", 4960)
bottle.run(quiet=True, **options)
`, ` => loopback 4960
BOTTLE_PORT=5351 => loopback 5351
BOTTLE_HOST=0.0.0.0 => any 4960`},
	{"node event driven bootstrap", `-- Procfile --
web: node app.js
-- package.json --
{"name":"gate","private":true}
-- lib/bus.js --
const { EventEmitter } = require('events');
class Bus extends EventEmitter {
  ready(fn) { return this.once('ready', fn); }
}
module.exports = new Bus();
-- lib/settings.js --
const bus = require('./bus');
function load() {
  const settings = { port: 5010, host: undefined };
  if (process.env.PORT) settings.port = Math.trunc(process.env.PORT);
  bus.emit('ready', settings);
}
module.exports = { load };
-- app.js --
const http = require('http');
const bus = require('./lib/bus');
const { load } = require('./lib/settings');
bus.ready(({ port, host }) => {
  http.createServer((q, s) => s.end()).listen(port, host);
});
load();
`, ` => any 5010
PORT=6011 => any 6011`},
	{"node promise config with timeout", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"gate","private":true,"type":"module"}
-- config.mjs --
import { setTimeout as wait } from 'node:timers/promises';
export async function config() {
  await wait(5);
  const [host, port] = (process.env.LISTEN_ON ?? '0.0.0.0:5020').split(':');
  return new Map([['host', host], ['port', Number(port)]]);
}
-- app.mjs --
import { createServer } from 'node:http';
import { config } from './config.mjs';
const settings = await Promise.race([config(), new Promise((_, no) => setTimeout(no, 5000, new Error('late')))]);
const server = createServer((_, res) => res.end('ok'));
await new Promise((done) => server.listen(settings.get('port'), settings.get('host'), done));
console.log('up', server.address());
`, ` => any 5020
LISTEN_ON=127.0.0.1:6022 => loopback 6022`},
	{"node json5 like config by regex", `-- Procfile --
web: node start.js --config=conf/night.conf
-- package.json --
{"name":"night","private":true}
-- conf/night.conf --
# settings of the night
listen = 0.0.0.0
port   = 5040   # of the gate
-- start.js --
const fs = require('fs');
const arg = process.argv.find((a) => a.startsWith('--config='));
const file = arg ? arg.split('=')[1] : 'conf/day.conf';
const settings = {};
for (const line of fs.readFileSync(file, 'utf8').split(/\r?\n/)) {
  const m = /^\s*([a-z]+)\s*=\s*([^#]*?)\s*(?:#.*)?$/.exec(line);
  if (m) settings[m[1]] = m[2];
}
require('net').createServer((c) => c.end()).listen(process.env.NIGHT_PORT || settings.port, settings.listen);
`, ` => any 5040
NIGHT_PORT=6044 => any 6044`},
	{"fastify autoload by hand with plugins", `-- Procfile --
web: node server.js
-- package.json --
{"name":"log","private":true,"dependencies":{"fastify":"5.12.8"}}
-- plugins/config.js --
module.exports = async function config(app) {
  const production = process.env.NODE_ENV === 'production';
  app.decorate('config', { port: Number(process.env.PORT || 5050), host: production ? '0.0.0.0' : '127.0.0.1' });
};
module.exports[Symbol.for('skip-override')] = true;
-- server.js --
const fastify = require('fastify');
async function main() {
  const app = fastify();
  await app.register(require('./plugins/config'));
  app.get('/', async () => ({ ok: true }));
  await app.ready();
  await app.listen(app.config);
}
main().catch((err) => { console.error(err); process.exit(1); });
`, ` => loopback 5050
PORT=6055 NODE_ENV=production => any 6055`},
	{"hono with env adapter", `-- Procfile --
web: node index.js
-- package.json --
{"name":"log","private":true,"type":"module","dependencies":{"hono":"4.13.19","@hono/node-server":"2.1.9"}}
-- index.js --
import { Hono } from 'hono';
import { createAdaptorServer } from '@hono/node-server';
const app = new Hono().get('/', (c) => c.text('ok'));
const server = createAdaptorServer({ fetch: app.fetch });
server.listen(Number.parseInt(process.env.PORT ?? '', 10) || 5060, '0.0.0.0');
`, ` => any 5060
PORT=6066 => any 6066`},
	{"ws server with argument parser class", `-- Procfile --
web: node ws.js -p ${PORT:-5070} --quiet
-- package.json --
{"name":"live","private":true,"dependencies":{"ws":"8.18.0"}}
-- ws.js --
const { WebSocketServer } = require('ws');
class Args {
  #flags = new Map();
  constructor(argv) {
    let key = null;
    for (const a of argv) {
      if (/^--?\w/.test(a)) {
        key = a.replace(/^-+/, '');
        this.#flags.set(key, true);
      } else if (key) {
        this.#flags.set(key, a);
        key = null;
      }
    }
  }
  get(...names) {
    for (const n of names) if (this.#flags.has(n)) return this.#flags.get(n);
    return undefined;
  }
  number(...names) {
    const v = this.get(...names);
    return v === undefined || v === true ? NaN : Number(v);
  }
}
const args = new Args(process.argv.slice(2));
const port = args.number('p', 'port');
new WebSocketServer({ port: Number.isNaN(port) ? 5071 : port, host: args.get('host') });
`, ` => any 5070
PORT=6077 => any 6077`},
	{"starlette with config object from file", `-- Procfile --
web: python main.py
-- requirements.txt --
starlette==0.26.1
uvicorn==0.17.6
-- .env --
SCOPE_HOST=0.0.0.0
SCOPE_PORT=5090
-- main.py --
import uvicorn
from starlette.applications import Starlette
from starlette.config import Config
from starlette.responses import PlainTextResponse
from starlette.routing import Route

config = Config(".env")
HOST = config("SCOPE_HOST", default="127.0.0.1")
PORT = config("SCOPE_PORT", cast=int, default=8000)

app = Starlette(routes=[Route("/", lambda r: PlainTextResponse("scope"))])

if __name__ == "__main__":
    uvicorn.run(app, host=HOST, port=PORT)
`, ` => any 5090
SCOPE_PORT=6091 => any 6091`},
	{"python wsgiref with ini", `-- Procfile --
web: python3 serve.py
-- gate.ini --
[DEFAULT]
host = 127.0.0.1
port = 5100

[day]

[live]
host = 0.0.0.0
port = %(base)s1
base = 510
-- serve.py --
import configparser
import os
import sys
from wsgiref.simple_server import make_server

cp = configparser.ConfigParser()
cp.read("gate.ini")
name = os.environ.get("GATE_SECTION", "day")
if name not in cp:
    sys.exit("no section " + name)
section = cp[name]


def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"ok"]


make_server(section["host"], section.getint("port"), app).serve_forever()
`, ` => loopback 5100
GATE_SECTION=live => any 5101
GATE_SECTION=none => exits`},
	{"python with decorators for settings", `-- Procfile --
web: python3 gate.py
-- gate.py --
import functools
import os
import socketserver


def setting(name, check=lambda v: True):
    def wrap(fn):
        @functools.wraps(fn)
        def inner(*args, **kwargs):
            raw = os.environ.get(name)
            value = fn(raw, *args, **kwargs)
            if not check(value):
                raise ValueError(f"{name}={value!r}")
            return value
        inner.setting = name
        return inner
    return wrap


@setting("GATE_PORT", check=lambda p: 0 < p < 65536)
def port(raw, default=5120):
    return int(raw) if raw else default


@setting("GATE_HOST")
def host(raw):
    return raw or "127.0.0.1"


class Echo(socketserver.BaseRequestHandler):
    def handle(self):
        self.request.sendall(self.request.recv(1024))


if __name__ == "__main__":
    with socketserver.TCPServer((host(), port()), Echo) as server:
        server.serve_forever()
`, ` => loopback 5120
GATE_PORT=6121 => loopback 6121
GATE_PORT=80000 => exits`},
	{"gunicorn with app object and cmd flags in list", `-- Procfile --
web: gunicorn --config=gunicorn_conf.py --worker-class gthread 'dome.app:build("night")'
-- requirements.txt --
gunicorn==20.1.0
Flask==2.2.2
-- gunicorn_conf.py --
import os
import json

_defaults = json.loads('{"bind": ["0.0.0.0:5130"], "threads": 2}')
globals().update(_defaults)
if "DOME_BIND" in os.environ:
    bind = [b for b in os.environ["DOME_BIND"].split(",") if b]
-- dome/__init__.py --

-- dome/app.py --
from flask import Flask


def build(name):
    app = Flask(name)
    return app
`, ` => any 5130
DOME_BIND=127.0.0.1:6131 => loopback 6131`},
	{"hypercorn programmatic with config mapping", `-- Procfile --
web: python3 run.py
-- requirements.txt --
hypercorn==0.13.2
-- run.py --
import asyncio
import os

from hypercorn.asyncio import serve
from hypercorn.config import Config


async def app(scope, receive, send):
    if scope["type"] == "lifespan":
        while True:
            message = await receive()
            await send({"type": message["type"] + ".complete"})
            if message["type"] == "lifespan.shutdown":
                return
    await send({"type": "http.response.start", "status": 204, "headers": []})
    await send({"type": "http.response.body", "body": b""})


config = Config.from_mapping({"bind": [f"0.0.0.0:{os.getenv('PORT', 5140)}"], "loglevel": "warning"})
asyncio.run(serve(app, config))
`, ` => any 5140
PORT=6141 => any 6141`},
	{"go echo server with interface and registry", `-- Procfile --
web: ./echo
-- go.mod --
module echo

go 1.23
-- main.go --
package main

import (
	"bufio"
	"fmt"
	"log"
	"net"
	"os"
)

type opener interface {
	open(addr string) (net.Listener, error)
}

type openerFunc func(string) (net.Listener, error)

func (f openerFunc) open(a string) (net.Listener, error) { return f(a) }

var openers = map[string]opener{}

func register(name string, o opener) {
	if _, dup := openers[name]; dup {
		panic("twice: " + name)
	}
	openers[name] = o
}

func init() {
	for _, network := range []string{"tcp", "tcp4"} {
		register(network, openerFunc(func(a string) (net.Listener, error) { return net.Listen(network, a) }))
	}
}

func env(name, def string) string {
	if v, ok := os.LookupEnv(name); ok {
		return v
	}
	return def
}

func main() {
	name := env("ECHO_NET", "tcp")
	o, ok := openers[name]
	if !ok {
		fmt.Fprintf(os.Stderr, "unknown network %q\n", name)
		os.Exit(2)
	}
	l, err := o.open(env("ECHO_ADDR", ":5150"))
	if err != nil {
		log.Fatal(err)
	}
	for {
		c, err := l.Accept()
		if err != nil {
			log.Print(err)
			continue
		}
		go func() {
			defer c.Close()
			s := bufio.NewScanner(c)
			for s.Scan() {
				fmt.Fprintln(c, s.Text())
			}
		}()
	}
}
`, ` => any 5150
ECHO_NET=tcp4 ECHO_ADDR=127.0.0.1:6151 => loopback 6151
ECHO_NET=udp => exits`},
	{"go config from toml like text and templates", `-- Procfile --
web: ./scope -c scope.conf
-- go.mod --
module scope

go 1.23
-- scope.conf --
[http]
host = "127.0.0.1"
port = 5160

[log]
level = "info"
-- main.go --
package main

import (
	"bufio"
	"flag"
	"io"
	"log"
	"net"
	"net/http"
	"os"
	"strings"
)

type section map[string]string
type file map[string]section

func parse(r io.Reader) (file, error) {
	f := file{}
	cur := section{}
	s := bufio.NewScanner(r)
	for s.Scan() {
		line := strings.TrimSpace(s.Text())
		switch {
		case line == "" || strings.HasPrefix(line, "#"):
			continue
		case line[0] == '[' && line[len(line)-1] == ']':
			cur = section{}
			f[line[1:len(line)-1]] = cur
		default:
			k, v, _ := strings.Cut(line, "=")
			cur[strings.TrimSpace(k)] = strings.Trim(strings.TrimSpace(v), ` + "`" + `"` + "`" + `)
		}
	}
	return f, s.Err()
}

func main() {
	path := flag.String("c", "", "settings")
	flag.Parse()
	in, err := os.Open(*path)
	if err != nil {
		log.Fatal(err)
	}
	defer in.Close()
	f, err := parse(in)
	if err != nil {
		log.Fatal(err)
	}
	h := f["http"]
	if p := os.Getenv("SCOPE_PORT"); p != "" {
		h["port"] = p
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(h["host"], h["port"]), http.FileServer(http.Dir("."))))
}
`, ` => loopback 5160
SCOPE_PORT=6161 => loopback 6161`},
	{"go server with graceful end and options struct", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.23
-- server/server.go --
package server

import (
	"context"
	"errors"
	"net"
	"net/http"
	"sync"
	"time"
)

type Options struct {
	Addr     string
	Handler  http.Handler
	Timeouts struct{ Read, Write time.Duration }
}

type Server struct {
	mu   sync.Mutex
	http *http.Server
	ln   net.Listener
}

func New(o Options) (*Server, error) {
	if o.Addr == "" {
		o.Addr = ":5170"
	}
	if _, _, err := net.SplitHostPort(o.Addr); err != nil {
		return nil, err
	}
	s := &Server{http: &http.Server{Addr: o.Addr, Handler: o.Handler, ReadTimeout: o.Timeouts.Read}}
	return s, nil
}

func (s *Server) Start() (err error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.ln, err = net.Listen("tcp", s.http.Addr)
	if err != nil {
		return err
	}
	go func() {
		if err := s.http.Serve(s.ln); !errors.Is(err, http.ErrServerClosed) {
			panic(err)
		}
	}()
	return nil
}

func (s *Server) Stop(ctx context.Context) error { return s.http.Shutdown(ctx) }
-- main.go --
package main

import (
	"context"
	"fmt"
	"net/http"
	"os"
	"os/signal"
	"syscall"

	"gate/server"
)

func main() {
	opts := server.Options{Addr: os.Getenv("GATE_ADDR")}
	opts.Handler = http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { fmt.Fprintln(w, "gate") })
	s, err := server.New(opts)
	if err == nil {
		err = s.Start()
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	stop := make(chan os.Signal, 1)
	signal.Notify(stop, syscall.SIGINT, syscall.SIGTERM)
	<-stop
	s.Stop(context.Background())
}
`, ` => any 5170
GATE_ADDR=127.0.0.1:6171 => loopback 6171
GATE_ADDR=nope => exits`},
	{"go urfave style hand written commands", `-- Procfile --
web: ./ctl serve --port 5180
-- go.mod --
module ctl

go 1.23
-- main.go --
package main

import (
	"errors"
	"flag"
	"fmt"
	"net/http"
	"os"
	"strings"
)

type command struct {
	name string
	run  func(args []string) error
}

var commands []command

func init() {
	commands = []command{{"serve", serve}, {"version", version}}
}

func serve(args []string) error {
	fs := flag.NewFlagSet("serve", flag.ContinueOnError)
	port := fs.Int("port", 8080, "port")
	host := fs.String("host", os.Getenv("CTL_HOST"), "host")
	if err := fs.Parse(args); err != nil {
		return err
	}
	return http.ListenAndServe(fmt.Sprint(*host, ":", *port), nil)
}

func version([]string) error { fmt.Println("1"); return nil }

func main() {
	if len(os.Args) < 2 {
		fmt.Println("commands:", strings.Join(names(), ", "))
		os.Exit(2)
	}
	for _, c := range commands {
		if c.name == os.Args[1] {
			if err := c.run(os.Args[2:]); err != nil && !errors.Is(err, flag.ErrHelp) {
				fmt.Println(err)
				os.Exit(1)
			}
			return
		}
	}
	os.Exit(2)
}

func names() (out []string) {
	for _, c := range commands {
		out = append(out, c.name)
	}
	return
}
`, ` => any 5180
CTL_HOST=127.0.0.1 => loopback 5180`},
	{"sinatra with yaml config and env", `-- Procfile --
web: ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "puma"
-- config/app.yml --
default: &default
  bind: 127.0.0.1
  port: 5190
development:
  <<: *default
production:
  <<: *default
  bind: 0.0.0.0
-- app.rb --
require "yaml"
require "sinatra"

conf = YAML.load_file(File.join(__dir__, "config", "app.yml"), aliases: true)
env = conf.fetch(settings.environment.to_s)

set :bind, env["bind"]
set :port, (ENV["GATE_PORT"] || env["port"]).to_i

get "/" do
  "ok"
end
`, ` => loopback 5190
RACK_ENV=production => any 5190
GATE_PORT=6191 => loopback 6191`},
	{"ruby webrick with options hash and dsl", `-- Procfile --
web: ruby serve.rb
-- lib/dsl.rb --
module Dsl
  def option(name, default:, env: nil, &convert)
    options[name] = { default: default, env: env, convert: convert || ->(x) { x } }
    define_singleton_method(name) do
      o = options[name]
      raw = o[:env] && ENV[o[:env]]
      raw.nil? ? o[:default] : o[:convert].call(raw)
    end
  end

  def options
    @options ||= {}
  end
end
-- serve.rb --
require "webrick"
require_relative "lib/dsl"

class Settings
  extend Dsl
  option :bind, default: "127.0.0.1", env: "DOME_BIND"
  option(:port, default: 5200, env: "DOME_PORT") { |v| Integer(v) }
end

server = WEBrick::HTTPServer.new(BindAddress: Settings.bind, Port: Settings.port, Logger: WEBrick::Log.new($stderr, 1), AccessLog: [])
server.mount_proc("/") { |_q, r| r.body = "dome" }
%w[INT TERM].each { |s| trap(s) { server.shutdown } }
server.start
`, ` => loopback 5200
DOME_PORT=6201 DOME_BIND=0.0.0.0 => any 6201`},
	{"rackup with config file and env", `-- Procfile --
web: rackup -s webrick -o ${HOST:-0.0.0.0} -p ${PORT:-5210} -E production config.ru
-- Gemfile --
source "https://rubygems.org"
gem "rack"
gem "webrick"
-- config.ru --
run lambda { |env| [200, { "Content-Type" => "text/plain" }, ["ok"]] }
`, ` => any 5210
PORT=6211 HOST=127.0.0.1 => loopback 6211`},
	{"php reactor style with interfaces", `-- Procfile --
web: php public/server.php --port=5220
-- composer.json --
{"name":"observatory/live","require":{"php":">=8.1"}}
-- public/server.php --
<?php
declare(strict_types=1);

interface Source { public function get(string $key): ?string; }

final class EnvSource implements Source
{
    public function get(string $key): ?string
    {
        $v = getenv('SERVER_' . strtoupper($key) . '_OVERRIDE');
        return $v === false ? null : $v;
    }
}

final class ArgSource implements Source
{
    private array $args = [];
    public function __construct(array $argv)
    {
        foreach (array_slice($argv, 1) as $arg) {
            if (preg_match('/^--(\w+)=(.*)$/', $arg, $m)) {
                $this->args[$m[1]] = $m[2];
            }
        }
    }
    public function get(string $key): ?string { return $this->args[$key] ?? null; }
}

final class Chain implements Source
{
    /** @var Source[] */
    private array $sources;
    public function __construct(Source ...$sources) { $this->sources = $sources; }
    public function get(string $key): ?string
    {
        foreach ($this->sources as $s) {
            if (($v = $s->get($key)) !== null) return $v;
        }
        return null;
    }
}

$chain = new Chain(new EnvSource(), new ArgSource($argv));
$port = (int) ($chain->get('port') ?? 8080);
$host = $chain->get('host') ?? '127.0.0.1';
$socket = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
socket_set_option($socket, SOL_SOCKET, SO_REUSEADDR, 1);
socket_bind($socket, $host, $port) or exit(1);
socket_listen($socket, 16);
while ($c = socket_accept($socket)) socket_close($c);
`, ` => loopback 5220
SERVER_PORT_OVERRIDE=6221 => loopback 6221`},
	{"php json config merged with env list", `-- Procfile --
web: php serve.php
-- composer.json --
{"name":"observatory/live","require":{"php":">=8.1"}}
-- config.json --
{"listen": {"address": "127.0.0.1", "port": 5230}, "debug": false}
-- serve.php --
<?php
$config = json_decode(file_get_contents(__DIR__ . '/config.json'), false, 16, JSON_THROW_ON_ERROR);
if ($listen = getenv('APP_LISTEN')) {
    [$config->listen->address, $port] = explode(':', $listen);
    $config->listen->port = (int) $port;
}
$uri = "tcp://{$config->listen->address}:{$config->listen->port}";
$server = @stream_socket_server($uri, $no, $str, STREAM_SERVER_BIND | STREAM_SERVER_LISTEN);
$server or die("$str ($no)");
for (;;) {
    if ($conn = @stream_socket_accept($server, 60)) {
        fwrite($conn, "ok\n");
        fclose($conn);
    }
}
`, ` => loopback 5230
APP_LISTEN=0.0.0.0:6231 => any 6231`},
	{"java generic config with default methods", `-- Procfile --
web: java -cp out dome.Main
-- src/dome/Settings.java --
package dome;

import java.util.Optional;
import java.util.OptionalInt;

public interface Settings {
    Optional<String> find(String key);

    default String text(String key, String fallback) {
        return find(key).orElse(fallback);
    }

    default int number(String key, int fallback) {
        Optional<String> raw = find(key);
        if (raw.isEmpty()) return fallback;
        try {
            return Integer.parseInt(raw.get().trim());
        } catch (NumberFormatException e) {
            throw new IllegalStateException(key + " is no number: " + raw.get(), e);
        }
    }

    static Settings environment(String prefix) {
        return key -> Optional.ofNullable(System.getenv(prefix + key.toUpperCase().replace('.', '_')));
    }
}
-- src/dome/Main.java --
package dome;

import com.sun.net.httpserver.*;
import java.net.*;

class Main {
    public static void main(String[] args) throws Exception {
        Settings s = Settings.environment("DOME_");
        InetAddress host = InetAddress.getByName(s.text("host", "0.0.0.0"));
        HttpServer server = HttpServer.create(new InetSocketAddress(host, s.number("port", 5240)), 50);
        server.createContext("/", new Root());
        server.start();
    }

    static class Root implements HttpHandler {
        @Override
        public void handle(HttpExchange x) throws java.io.IOException {
            x.sendResponseHeaders(204, -1);
        }
    }
}
`, ` => any 5240
DOME_PORT=6241 => any 6241
DOME_PORT=x => exits`},
	{"deno with std like parse and classes", `-- Procfile --
web: deno run -A src/main.ts serve --host 127.0.0.1
-- deno.json --
{"tasks":{"start":"deno run -A src/main.ts"}}
-- src/cli.ts --
export type Flags = Record<string, string | boolean>;
export function parse(args: string[]): { _: string[]; flags: Flags } {
  const out = { _: [] as string[], flags: {} as Flags };
  for (let i = 0; i < args.length; i++) {
    const a = args[i];
    if (!a.startsWith("--")) { out._.push(a); continue; }
    const [k, v] = a.slice(2).split("=");
    if (v !== undefined) out.flags[k] = v;
    else if (args[i + 1] && !args[i + 1].startsWith("--")) out.flags[k] = args[++i];
    else out.flags[k] = true;
  }
  return out;
}
-- src/main.ts --
import { parse } from "./cli.ts";
const { _: [verb = "help"], flags } = parse(Deno.args);
const verbs: Record<string, () => void> = {
  serve() {
    const port = Number(flags.port ?? Deno.env.get("PORT") ?? 5250);
    Deno.serve({ port, hostname: typeof flags.host === "string" ? flags.host : undefined }, () => new Response("ok"));
  },
  help() { console.log("serve"); },
};
verbs[verb]();
`, ` => loopback 5250
PORT=6251 => loopback 6251`},
	{"bun with class and hot reload off", `-- Procfile --
web: bun run server.ts
-- package.json --
{"name":"dome","type":"module","private":true}
-- server.ts --
abstract class App {
  protected abstract readonly name: string;
  protected get options() {
    return { port: process.env.PORT ?? "5260", hostname: process.env["BUN_HOST"] ?? "0.0.0.0" };
  }
  start() {
    const self = this;
    return Bun.serve({ ...this.options, fetch() { return new Response(self.name); } });
  }
}
class Dome extends App {
  protected readonly name = "dome";
  protected override get options() {
    const { port, ...rest } = super.options;
    return { ...rest, port: Number(port) };
  }
}
new Dome().start();
`, ` => any 5260
PORT=6261 => any 6261
BUN_HOST=127.0.0.1 => loopback 5260`},
	{"small node 2", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const base = Number(process.env.BASE) || 3000;
const offset = 2 * 5 + 1;
require('http').createServer((q, s) => s.end()).listen(base + offset, 'localhost');
`, ` => loopback 3011
BASE=7000 => loopback 7011`},
	{"small node 3", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const tree = {};
for (const [k, v] of Object.entries(process.env)) {
  if (!k.startsWith('GATE__')) continue;
  const path = k.slice(6).toLowerCase().split('__');
  let at = tree;
  while (path.length > 1) at = at[path.shift()] ??= {};
  at[path[0]] = v;
}
require('http').createServer((q, s) => s.end()).listen(Number(tree.http?.port ?? 3103));
`, ` => any 3103
GATE__HTTP__PORT=7003 => any 7003`},
	{"small node 4", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const first = (...names) => names.map((n) => process.env[n]).find((v) => v);
const port = first('PORT', 'HTTP_PORT', 'APP_PORT') ?? 3104;
require('net').createServer().listen({ port, host: '::' });
`, ` => any 3104
HTTP_PORT=7004 => any 7004
PORT=7005 HTTP_PORT=7004 => any 7005`},
	{"small node 5", `-- Procfile --
web: node -r dotenv/config s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"dotenv":"17.0.0"}}
-- .env --
PORT=3105
HOST=127.0.0.1
-- s.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT, process.env.HOST);
`, ` => loopback 3105
PORT=7006 => loopback 7006`},
	{"small node 6", `-- Procfile --
web: node --env-file=.env.local s.js
-- package.json --
{"name":"a","private":true,"engines":{"node":"20.x"}}
-- .env.local --
PORT=3106
-- s.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT ?? 1);
`, ` => any 3106
PORT=7007 => any 7007`},
	{"small node 7", `-- Procfile --
web: npm start --silent
-- package.json --
{"name":"a","private":true,"config":{"port":"3107"},"scripts":{"start":"node s.js"}}
-- s.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || process.env.npm_package_config_port);
`, ` => any 3107
PORT=7008 => any 7008`},
	{"small node 8", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","private":true}
-- s.mjs --
import http from 'node:http';
import { parseArgs } from 'node:util';
const { values } = parseArgs({ options: { port: { type: 'string', short: 'p', default: process.env.PORT ?? '3108' }, host: { type: 'string' } } });
http.createServer((q, s) => s.end()).listen(+values.port, values.host);
`, ` => any 3108
PORT=7009 => any 7009`},
	{"small node 9", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- config/index.js --
const env = process.env.NODE_ENV || 'development';
module.exports = { ...require('./common'), ...require(` + "`" + `./${env}` + "`" + `) };
-- config/common.js --
module.exports = { port: process.env.PORT || 3109, host: '127.0.0.1' };
-- config/development.js --
module.exports = {};
-- config/production.js --
module.exports = { host: '0.0.0.0' };
-- config/test.js --
exports.port = 3110;
-- s.js --
const { port, host } = require('./config');
require('http').createServer((q, s) => s.end()).listen(port, host);
`, ` => loopback 3109
NODE_ENV=production => any 3109
NODE_ENV=test PORT=7010 => loopback 3110`},
	{"small express 1", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"express":"5.3.0"}}
-- s.js --
const express = require('express');
const app = express();
app.set('port', process.env.PORT || 3111);
app.get('/', (q, s) => s.send('x'));
const server = app.listen(app.get('port'), function () { console.log(server.address().port); });
`, ` => any 3111
PORT=7011 => any 7011`},
	{"small fastify 1", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"fastify":"5.12.8"}}
-- s.js --
const app = require('fastify')();
app.get('/', async () => 'x');
const start = async () => {
  try {
    await app.listen({ port: process.env.PORT || 3112, host: process.env.ADDRESS });
  } catch (e) {
    process.exit(1);
  }
};
start();
`, ` => loopback 3112
PORT=7012 ADDRESS=0.0.0.0 => any 7012
PORT=x => exits`},
	{"small koa 1", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"koa":"3.3.0"}}
-- s.js --
const Koa = require('koa');
const port = parseInt(process.env.PORT, 10);
new Koa().use((c) => { c.body = 'x'; }).listen(isNaN(port) ? 3113 : port);
`, ` => any 3113
PORT=7013 => any 7013`},
	{"small hono 1", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","private":true,"dependencies":{"hono":"4.13.19","@hono/node-server":"2.1.9"}}
-- s.mjs --
import { Hono } from 'hono';
import { serve } from '@hono/node-server';
const app = new Hono();
serve({ ...app, port: process.env.PORT ? Number(process.env.PORT) : undefined });
`, ` => any 3000
PORT=7014 => any 7014`},
	{"small socket.io 1", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"socket.io":"4.8.4","express":"5.3.0"}}
-- s.js --
const app = require('express')();
const server = require('http').Server(app);
const io = require('socket.io')(server);
io.on('connection', () => {});
const { PORT = 3115 } = process.env;
server.listen(PORT);
`, ` => any 3115
PORT=7015 => any 7015`},
	{"small bun 1", `-- Procfile --
web: bun s.ts
-- package.json --
{"name":"a","private":true}
-- s.ts --
const server = Bun.serve({ fetch: () => new Response("x"), port: Bun.env.PORT ? Number(Bun.env.PORT) : undefined });
`, ` => any 3000
PORT=7016 => any 7016
BUN_PORT=7017 => any 7017`},
	{"small bun 2", `-- Procfile --
web: bun --port=3117 s.ts
-- package.json --
{"name":"a","private":true}
-- s.ts --
Bun.serve({ fetch() { return new Response("x"); } });
`, ` => any 3117
PORT=7018 => any 7018`},
	{"small bun 3", `-- Procfile --
web: bun run s.ts
-- package.json --
{"name":"a","private":true}
-- bunfig.toml --
[serve]
port = 3118
-- s.ts --
Bun.serve({ hostname: process.env.LISTEN ?? "0.0.0.0", fetch: () => new Response("x") });
`, ` => any 3118
LISTEN=127.0.0.1 => loopback 3118`},
	{"small deno 1", `-- Procfile --
web: deno run -A s.ts
-- s.ts --
const raw = Deno.env.get("PORT");
const port = raw ? Number.parseInt(raw) : 3119;
Deno.serve({ port }, () => new Response("x"));
`, ` => any 3119
PORT=7019 => any 7019
PORT=70000 => exits`},
	{"small deno 2", `-- Procfile --
web: deno run -A s.ts
-- s.ts --
Deno.serve(() => new Response("x"));
`, ` => any 8000
DENO_SERVE_ADDRESS=tcp:127.0.0.1:7020 => loopback 7020`},
	{"small deno 3", `-- Procfile --
web: deno run -A --env-file=.env s.ts
-- .env --
PORT=3121
-- s.ts --
const listener = Deno.listen({ port: Number(Deno.env.get("PORT")), hostname: "127.0.0.1" });
for await (const conn of listener) conn.close();
`, ` => loopback 3121
PORT=7021 => loopback 7021`},
	{"small python 1", `-- Procfile --
web: python3 s.py
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler as H
PORT = int(os.environ.get('PORT', '3122'))
HTTPServer(('', PORT), H).serve_forever()
`, ` => any 3122
PORT=7022 => any 7022
PORT=no => exits`},
	{"small python 2", `-- Procfile --
web: python3 s.py
-- requirements.txt --
flask==2.2.2
-- s.py --
from flask import Flask
import os
app = Flask(__name__)
app.config.from_prefixed_env()
@app.get('/')
def i(): return 'x'
if __name__ == '__main__':
    app.run('0.0.0.0', app.config.get('PORT', 3123))
`, ` => any 3123
FLASK_PORT=7023 => any 7023`},
	{"small python 3", `-- Procfile --
web: flask run --port ${PORT:-3124} --host=0.0.0.0
-- requirements.txt --
flask==2.2.2
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ` => any 3124
PORT=7024 => any 7024
FLASK_RUN_HOST=127.0.0.1 => any 3124`},
	{"small python 4", `-- Procfile --
web: flask run
-- requirements.txt --
flask==2.2.2
python-dotenv==0.21.0
-- .flaskenv --
FLASK_APP=site_app
FLASK_RUN_PORT=3125
-- site_app.py --
from flask import Flask
app = Flask(__name__)
`, `FLASK_RUN_PORT=7025 => loopback 7025
 => loopback 3125`},
	{"small python 5", `-- Procfile --
web: uvicorn main:app --host 0.0.0.0 --port $PORT
-- requirements.txt --
uvicorn==0.17.6
-- main.py --
async def app(s, r, t): ...
`, `PORT=7026 => any 7026
UVICORN_PORT=7027 PORT=7028 => any 7028`},
	{"small python 8", `-- Procfile --
web: python3 s.py
-- requirements.txt --
tornado==6.2
-- s.py --
import os, asyncio, tornado.web
async def main():
    tornado.web.Application([]).listen(int(os.getenv('PORT') or 3128))
    await asyncio.Event().wait()
asyncio.run(main())
`, ` => any 3128
PORT=7032 => any 7032`},
	{"small python 9", `-- Procfile --
web: python3 s.py
-- requirements.txt --
aiohttp==3.8.4
-- s.py --
import os
from aiohttp import web
app = web.Application()
web.run_app(app, host=os.environ.get('HOST'), port=int(os.environ.get('PORT', 3129)))
`, ` => any 3129
PORT=7033 HOST=127.0.0.1 => loopback 7033`},
	{"small python 10", `-- Procfile --
web: waitress-serve --port=${PORT:-3130} main:app
-- requirements.txt --
waitress==2.1.2
-- main.py --
def app(e, s):
    s('200 OK', [])
    return []
`, ` => any 3130
PORT=7034 => any 7034`},
	{"small python 11", `-- Procfile --
web: hypercorn main:app -b 0.0.0.0:${PORT:-3131}
-- requirements.txt --
hypercorn==0.13.2
-- main.py --
async def app(scope, receive, send): ...
`, ` => any 3131
PORT=7035 => any 7035`},
	{"small python 12", `-- Procfile --
web: python3 manage.py runserver --noreload 0:${PORT:-3132}
-- requirements.txt --
Django==3.2.25
-- manage.py --
import os, sys
os.environ['DJANGO_SETTINGS_MODULE'] = 'conf'
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- conf.py --
SECRET_KEY = 'x'
DEBUG = True
ROOT_URLCONF = 'conf'
urlpatterns = []
`, ` => any 3132
PORT=7036 => any 7036`},
	{"small python 13", `-- Procfile --
web: python3 -m http.server ${PORT:-3133} --bind 127.0.0.1
-- index.html --
x
`, ` => loopback 3133
PORT=7037 => loopback 7037`},
	{"small python 14", `-- Procfile --
web: python3 s.py --port 3134
-- s.py --
import argparse, os, socketserver
p = argparse.ArgumentParser()
p.add_argument('--port', type=int, default=int(os.environ.get('PORT', 8000)))
p.add_argument('--host', default='0.0.0.0')
a = p.parse_args()
socketserver.TCPServer((a.host, a.port), socketserver.BaseRequestHandler).serve_forever()
`, ` => any 3134
PORT=7038 => any 3134`},
	{"small go 1", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"
)

func main() {
	port, ok := os.LookupEnv("PORT")
	if !ok {
		port = "3135"
	}
	fmt.Println(http.ListenAndServe(fmt.Sprintf(":%s", port), nil))
}
`, ` => any 3135
PORT=7039 => any 7039`},
	{"small go 2", `-- Procfile --
web: ./a -addr=127.0.0.1:3136
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"flag"
	"log"
	"net"
	"net/http"
	"os"
)

var addr string

func init() {
	flag.StringVar(&addr, "addr", ":8080", "where")
}

func main() {
	flag.Parse()
	if a := os.Getenv("ADDR"); a != "" {
		addr = a
	}
	ln, err := net.Listen("tcp", addr)
	if err != nil {
		log.Fatalln(err)
	}
	log.Fatal(http.Serve(ln, nil))
}
`, ` => loopback 3136
ADDR=:7040 => any 7040`},
	{"small go 3", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"log"
	"net"
	"os"
	"strconv"
)

func port() int {
	n, err := strconv.Atoi(os.Getenv("PORT"))
	if err != nil {
		return 3137
	}
	return n
}

func main() {
	ln, err := net.ListenTCP("tcp", &net.TCPAddr{IP: net.IPv4(127, 0, 0, 1), Port: port()})
	if err != nil {
		log.Fatal(err)
	}
	for {
		c, _ := ln.Accept()
		c.Close()
	}
}
`, ` => loopback 3137
PORT=7041 => loopback 7041
PORT=abc => loopback 3137`},
	{"small ruby 1", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- s.rb --
require "webrick"
WEBrick::HTTPServer.new(Port: (ENV["PORT"] || 3138).to_i).start
`, ` => any 3138
PORT=7042 => any 7042`},
	{"small ruby 2", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "puma"
-- s.rb --
require "sinatra"
set :port, 3139 unless ENV["PORT"]
get("/") { "x" }
`, ` => loopback 3139
PORT=7043 => loopback 7043
APP_ENV=production => any 3139`},
	{"small ruby 3", `-- Procfile --
web: rackup -p ${PORT:-3140}
-- Gemfile --
source "https://rubygems.org"
gem "rack"
gem "webrick"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
`, ` => loopback 3140
PORT=7044 => loopback 7044`},
	{"small ruby 4", `-- Procfile --
web: puma
-- Gemfile --
source "https://rubygems.org"
gem "puma"
gem "rack"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
`, ` => any 9292
PORT=7045 => any 9292
RACK_ENV=production => any 9292`},
	{"small ruby 5", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
server = Socket.new(:INET, :STREAM)
server.setsockopt(:SOCKET, :REUSEADDR, true)
server.bind(Addrinfo.tcp("127.0.0.1", ENV.fetch("PORT", 3141).to_i))
server.listen(5)
loop { c, _ = server.accept; c.close }
`, ` => loopback 3141
SOCKET=3 => loopback 3141`},
	{"small php 2", `-- Procfile --
web: php -S localhost:${PORT:-3142}
-- composer.json --
{"require":{"php":">=8"}}
-- index.php --
x
`, ` => loopback 3142
PORT=7046 => loopback 7046`},
	{"small php 3", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = $_ENV['PORT'] ?? $_SERVER['PORT'] ?? 3143;
$s = stream_socket_server("tcp://0.0.0.0:" . intval($port)) ?: die();
while (true) { if ($c = @stream_socket_accept($s, 5)) fclose($c); }
`, ` => any 3143
PORT=7047 => any 7047`},
	{"small java 1", `-- Procfile --
web: java S.java
-- S.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
class S {
    public static void main(String[] a) throws Exception {
        String p = System.getenv("PORT");
        int port = p != null ? Integer.parseInt(p) : 3144;
        HttpServer.create(new InetSocketAddress("0.0.0.0", port), 0).start();
    }
}
`, ` => any 3144
PORT=7048 => any 7048`},
	{"small java 2", `-- Procfile --
web: java -Dport=3145 S.java
-- S.java --
import java.net.*;
class S {
    static int port() {
        try {
            return Integer.parseInt(System.getenv("PORT"));
        } catch (NumberFormatException e) {
            return Integer.getInteger("port", 9000);
        }
    }
    public static void main(String[] a) throws Exception {
        try (ServerSocket s = new ServerSocket(port())) {
            for (;;) s.accept().close();
        }
    }
}
`, ` => any 3145
PORT=7049 => any 7049`},
	{"small java 3", `-- Procfile --
web: java S.java ${PORT:-3146}
-- S.java --
import java.net.*;
import java.nio.channels.*;
public class S {
    public static void main(String... args) throws Exception {
        int port = args.length > 0 ? Integer.parseInt(args[0]) : 80;
        ServerSocketChannel c = ServerSocketChannel.open();
        c.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        while (true) c.accept().close();
    }
}
`, ` => loopback 3146
PORT=7050 => loopback 7050`},
	{"zod with preprocess and refine", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","private":true,"dependencies":{"zod":"3.25.0"}}
-- s.mjs --
import http from 'node:http';
import { z } from 'zod';
const Env = z.object({
  PORT: z.preprocess((v) => (v === undefined || v === '' ? 3201 : Number(v)), z.number().int().min(1).max(65535)),
  HOST: z.string().default('127.0.0.1'),
});
const parsed = Env.safeParse(process.env);
if (!parsed.success) {
  console.error(parsed.error.message);
  process.exit(1);
}
http.createServer((q, s) => s.end()).listen(parsed.data.PORT, parsed.data.HOST);
`, ` => loopback 3201
PORT=7101 => loopback 7101
PORT=99999 => exits`},
	{"zod with transform and enum stage", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","private":true,"dependencies":{"zod":"3.25.0"}}
-- s.mjs --
import http from 'node:http';
import { z } from 'zod';
const schema = z.object({
  STAGE: z.enum(['dev', 'prod']).default('dev'),
  PORT: z.string().regex(/^\d+$/).transform(Number).optional(),
});
const env = schema.parse(process.env);
const defaults = { dev: 3202, prod: 80 };
http.createServer((q, s) => s.end()).listen(env.PORT ?? defaults[env.STAGE], env.STAGE === 'prod' ? '0.0.0.0' : 'localhost');
`, ` => loopback 3202
STAGE=prod PORT=7102 => any 7102
STAGE=other => exits`},
	{"envalid with dev default", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"envalid":"8.0.0"}}
-- s.js --
const { cleanEnv, port, host } = require('envalid');
const env = cleanEnv(process.env, { PORT: port({ devDefault: 3203 }), HOST: host({ default: '0.0.0.0' }) });
require('http').createServer((q, s) => s.end()).listen(env.PORT, env.HOST);
`, ` => exits
NODE_ENV=production => exits
NODE_ENV=production PORT=7103 => any 7103`},
	{"env-var chain", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"env-var":"7.5.0"}}
-- s.js --
const env = require('env-var').from(process.env);
const port = env.get('APP_PORT').default('3204').asPortNumber();
require('http').createServer((q, s) => s.end()).listen(port);
`, ` => any 3204
APP_PORT=7104 => any 7104
APP_PORT=abc => exits`},
	{"convict with file and env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"convict":"6.2.4"}}
-- conf.json --
{"port": 3206}
-- s.js --
const convict = require('convict');
const config = convict({
  ip: { format: String, default: '0.0.0.0', env: 'IP' },
  port: { format: 'port', default: 3205, env: 'PORT', arg: 'port' },
});
config.loadFile('./conf.json');
config.validate({ allowed: 'strict' });
require('http').createServer((q, s) => s.end()).listen(config.get('port'), config.get('ip'));
`, ` => any 3206
PORT=7105 => any 7105
IP=127.0.0.1 => loopback 3206`},
	{"nconf layers", `-- Procfile --
web: node s.js --http:port 3207
-- package.json --
{"name":"a","private":true,"dependencies":{"nconf":"0.12.1"}}
-- conf.json --
{"http": {"host": "0.0.0.0", "port": 3208}}
-- s.js --
const nconf = require('nconf');
nconf.argv().env('__').file({ file: 'conf.json' }).defaults({ http: { port: 1 } });
require('http').createServer((q, s) => s.end()).listen(Number(nconf.get('http:port')), nconf.get('http:host'));
`, ` => any 3207
http__host=127.0.0.1 => loopback 3207`},
	{"config package with custom variables", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"config":"3.3.12"}}
-- config/default.json --
{"http": {"port": 3209, "host": "127.0.0.1"}}
-- config/production.json --
{"http": {"host": "0.0.0.0"}}
-- config/custom-environment-variables.json --
{"http": {"port": "GATE_PORT"}}
-- s.js --
const config = require('config');
const { port, host } = config.get('http');
require('http').createServer((q, s) => s.end()).listen(Number(port), host);
`, ` => loopback 3209
GATE_PORT=7108 => loopback 7108
NODE_ENV=production => any 3209`},
	{"yargs with env prefix", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"yargs":"17.7.2"}}
-- s.js --
const argv = require('yargs/yargs')(process.argv.slice(2)).env('GATE').option('port', { type: 'number', default: 3210 }).option('host', { default: '0.0.0.0' }).parse();
require('http').createServer((q, s) => s.end()).listen(argv.port, argv.host);
`, ` => any 3210
GATE_PORT=7109 => any 7109`},
	{"commander with env option", `-- Procfile --
web: node s.js serve
-- package.json --
{"name":"a","private":true,"dependencies":{"commander":"12.1.0"}}
-- s.js --
const { Command, Option, InvalidArgumentError } = require('commander');
const int = (v) => {
  const n = parseInt(v, 10);
  if (isNaN(n)) throw new InvalidArgumentError('no number');
  return n;
};
const program = new Command();
program
  .command('serve')
  .addOption(new Option('-p, --port <number>').env('PORT').default(3211).argParser(int))
  .option('--host <host>', 'where', '127.0.0.1')
  .action(({ port, host }) => require('http').createServer((q, s) => s.end()).listen(port, host));
program.parse();
`, ` => loopback 3211
PORT=7110 => loopback 7110
PORT=x => exits`},
	{"pydantic with env file and field env", `-- Procfile --
web: python3 s.py
-- requirements.txt --
pydantic==1.10.4
-- .env --
WEB_PORT=3213
WEB_HOST=0.0.0.0
-- s.py --
import http.server
from pydantic import BaseSettings, Field


class Settings(BaseSettings):
    port: int = Field(8000, env="WEB_PORT")
    host: str = Field("127.0.0.1", env=["WEB_HOST", "HOST"])

    class Config:
        env_file = ".env"


s = Settings()
http.server.HTTPServer((s.host, s.port), http.server.BaseHTTPRequestHandler).serve_forever()
`, ` => any 3213
WEB_PORT=7113 => any 7113`},
	{"decouple with cast", `-- Procfile --
web: python3 s.py
-- requirements.txt --
python-decouple==3.6
-- s.py --
import socketserver
from decouple import config

port = config("PORT", default=3214, cast=int)
host = "" if config("PUBLIC", default=False, cast=bool) else "127.0.0.1"
socketserver.TCPServer((host, port), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 3214
PORT=7114 PUBLIC=True => any 7114
PUBLIC=maybe => exits`},
	{"python dotenv values merged", `-- Procfile --
web: python3 s.py
-- requirements.txt --
python-dotenv==0.21.0
-- .env.shared --
PORT=3215
HOST=127.0.0.1
-- .env.secret --
HOST=0.0.0.0
-- s.py --
import os
import socketserver
from dotenv import dotenv_values

config = {**dotenv_values(".env.shared"), **dotenv_values(".env.secret"), **os.environ}
socketserver.TCPServer((config["HOST"], int(config["PORT"])), socketserver.BaseRequestHandler).serve_forever()
`, ` => any 3215
PORT=7115 => any 7115`},
	{"click group with auto envvar", `-- Procfile --
web: python3 s.py serve
-- requirements.txt --
click==8.1.3
-- s.py --
import socketserver
import click


@click.group(context_settings={"auto_envvar_prefix": "GATE"})
def cli():
    pass


@cli.command()
@click.option("--port", default=3216, show_default=True, type=click.IntRange(1, 65535))
@click.option("--host", default="0.0.0.0")
def serve(port, host):
    with socketserver.TCPServer((host, port), socketserver.BaseRequestHandler) as s:
        s.serve_forever()


if __name__ == "__main__":
    cli()
`, ` => any 3216
GATE_SERVE_PORT=7116 => any 7116
GATE_SERVE_PORT=x => exits`},
	{"go viper with config and prefix", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/spf13/viper v1.19.0
-- config.yaml --
http:
  host: 127.0.0.1
  port: 3221
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"strings"

	"github.com/spf13/viper"
)

func main() {
	viper.SetConfigName("config")
	viper.AddConfigPath(".")
	viper.SetEnvPrefix("gate")
	viper.SetEnvKeyReplacer(strings.NewReplacer(".", "_"))
	viper.AutomaticEnv()
	viper.SetDefault("http.port", 8080)
	if err := viper.ReadInConfig(); err != nil {
		log.Fatal(err)
	}
	addr := fmt.Sprintf("%s:%d", viper.GetString("http.host"), viper.GetInt("http.port"))
	log.Fatal(http.ListenAndServe(addr, nil))
}
`, ` => loopback 3221
GATE_HTTP_PORT=7121 => loopback 7121`},
	{"go viper unmarshal", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/spf13/viper v1.19.0
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"

	"github.com/spf13/viper"
)

type Config struct {
	Host string ` + "`" + `mapstructure:"host"` + "`" + `
	Port string ` + "`" + `mapstructure:"port"` + "`" + `
}

func load() (c Config, err error) {
	v := viper.New()
	v.SetDefault("host", "0.0.0.0")
	v.SetDefault("port", "3222")
	if err = v.BindEnv("port", "PORT"); err != nil {
		return
	}
	err = v.Unmarshal(&c)
	return
}

func main() {
	c, err := load()
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(c.Host, c.Port), nil))
}
`, ` => any 3222
PORT=7122 => any 7122`},
	{"go envconfig", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/kelseyhightower/envconfig v1.4.0
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"

	"github.com/kelseyhightower/envconfig"
)

type spec struct {
	Host string ` + "`" + `default:"127.0.0.1"` + "`" + `
	Port int    ` + "`" + `envconfig:"PORT" default:"3223"` + "`" + `
}

func main() {
	var s spec
	if err := envconfig.Process("gate", &s); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprint(s.Host, ":", s.Port), nil))
}
`, ` => loopback 3223
GATE_PORT=7123 => loopback 7123
GATE_PORT=x => exits`},
	{"go caarlos env", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/caarlos0/env/v11 v11.2.2
-- main.go --
package main

import (
	"log"
	"net/http"
	"strconv"

	"github.com/caarlos0/env/v11"
)

type config struct {
	HTTP struct {
		Host string ` + "`" + `env:"HOST" envDefault:"0.0.0.0"` + "`" + `
		Port int    ` + "`" + `env:"PORT" envDefault:"3224"` + "`" + `
	}
}

func main() {
	cfg, err := env.ParseAs[config]()
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(cfg.HTTP.Host+":"+strconv.Itoa(cfg.HTTP.Port), nil))
}
`, ` => any 3224
PORT=7124 HOST=127.0.0.1 => loopback 7124`},
	{"go kong", `-- Procfile --
web: ./a serve --host 127.0.0.1
-- go.mod --
module a

go 1.23

require github.com/alecthomas/kong v1.4.0
-- main.go --
package main

import (
	"fmt"
	"net/http"

	"github.com/alecthomas/kong"
)

type ServeCmd struct {
	Host string ` + "`" + `default:"0.0.0.0"` + "`" + `
	Port int    ` + "`" + `default:"3225" env:"PORT"` + "`" + `
}

func (s *ServeCmd) Run() error {
	return http.ListenAndServe(fmt.Sprintf("%s:%d", s.Host, s.Port), nil)
}

var cli struct {
	Serve ServeCmd ` + "`" + `cmd:""` + "`" + `
}

func main() {
	ctx := kong.Parse(&cli)
	ctx.FatalIfErrorf(ctx.Run())
}
`, ` => loopback 3225
PORT=7125 => loopback 7125`},
	{"go cobra with persistent flags", `-- Procfile --
web: ./a serve -p 3226
-- go.mod --
module a

go 1.23

require github.com/spf13/cobra v1.8.1
-- main.go --
package main

import (
	"net"
	"net/http"
	"os"
	"strconv"

	"github.com/spf13/cobra"
)

var host string

func newServe() *cobra.Command {
	var port int
	cmd := &cobra.Command{
		Use: "serve",
		RunE: func(cmd *cobra.Command, args []string) error {
			return http.ListenAndServe(net.JoinHostPort(host, strconv.Itoa(port)), nil)
		},
	}
	cmd.Flags().IntVarP(&port, "port", "p", 8080, "port")
	return cmd
}

func main() {
	root := &cobra.Command{Use: "gate", SilenceUsage: true}
	def := os.Getenv("GATE_HOST")
	if def == "" {
		def = "0.0.0.0"
	}
	root.PersistentFlags().StringVar(&host, "host", def, "host")
	root.AddCommand(newServe())
	if err := root.Execute(); err != nil {
		os.Exit(1)
	}
}
`, ` => any 3226
GATE_HOST=127.0.0.1 => loopback 3226`},
	{"go urfave", `-- Procfile --
web: ./a serve
-- go.mod --
module a

go 1.23

require github.com/urfave/cli/v2 v2.27.4
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"

	"github.com/urfave/cli/v2"
)

func main() {
	app := &cli.App{
		Name: "gate",
		Commands: []*cli.Command{{
			Name: "serve",
			Flags: []cli.Flag{
				&cli.IntFlag{Name: "port", Value: 3227, EnvVars: []string{"GATE_PORT"}},
				&cli.StringFlag{Name: "host", Value: "127.0.0.1"},
			},
			Action: func(c *cli.Context) error {
				return http.ListenAndServe(fmt.Sprintf("%s:%d", c.String("host"), c.Int("port")), nil)
			},
		}},
	}
	if err := app.Run(os.Args); err != nil {
		log.Fatal(err)
	}
}
`, ` => loopback 3227
GATE_PORT=7127 => loopback 7127`},
	{"go godotenv", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/joho/godotenv v1.5.1
-- .env --
PORT=3228
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"

	"github.com/joho/godotenv"
)

func main() {
	if err := godotenv.Load(); err != nil {
		log.Println("no .env")
	}
	log.Fatal(http.ListenAndServe(":"+os.Getenv("PORT"), nil))
}
`, ` => any 3228
PORT=7128 => any 7128`},
	{"go echo and middleware", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/labstack/echo/v4 v4.12.0
-- main.go --
package main

import (
	"cmp"
	"errors"
	"net/http"
	"os"

	"github.com/labstack/echo/v4"
	"github.com/labstack/echo/v4/middleware"
)

func main() {
	e := echo.New()
	e.HideBanner = true
	e.Use(middleware.Recover())
	e.GET("/", func(c echo.Context) error { return c.String(http.StatusOK, "ok") })
	if err := e.Start(":" + cmp.Or(os.Getenv("PORT"), "3229")); !errors.Is(err, http.ErrServerClosed) {
		e.Logger.Fatal(err)
	}
}
`, ` => any 3229
PORT=7129 => any 7129`},
	{"go fiber with config", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/gofiber/fiber/v2 v2.52.5
-- main.go --
package main

import (
	"log"
	"os"

	"github.com/gofiber/fiber/v2"
)

func main() {
	app := fiber.New(fiber.Config{DisableStartupMessage: true})
	app.Get("/", func(c *fiber.Ctx) error { return c.SendString("ok") })
	port := os.Getenv("PORT")
	if len(port) == 0 {
		port = "3230"
	}
	log.Fatal(app.Listen("127.0.0.1:" + port))
}
`, ` => loopback 3230
PORT=7130 => loopback 7130`},
	{"go toml decode", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23

require github.com/BurntSushi/toml v1.4.0
-- gate.toml --
title = "gate"

[server]
host = "0.0.0.0"
ports = [3231, 3232]
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"strconv"

	"github.com/BurntSushi/toml"
)

type gate struct {
	Title  string
	Server *struct {
		Host  string
		Ports []int
	}
}

func main() {
	var g gate
	if _, err := toml.DecodeFile("gate.toml", &g); err != nil {
		log.Fatal(err)
	}
	port := strconv.Itoa(g.Server.Ports[0])
	if p, ok := os.LookupEnv("GATE_PORT"); ok {
		port = p
	}
	log.Fatal(http.ListenAndServe(g.Server.Host+":"+port, nil))
}
`, ` => any 3231
GATE_PORT=7131 => any 7131`},
	{"node load env file by the process", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"engines":{"node":"20.x"}}
-- conf.env --
PORT=3301
BIND="127.0.0.1"
-- s.js --
process.loadEnvFile('conf.env');
require('http').createServer((q, s) => s.end()).listen({ port: process.env.PORT, host: process.env.BIND });
`, ` => loopback 3301
PORT=7201 => loopback 7201`},
	{"node define property and frozen settings", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
'use strict';
const settings = Object.create(null);
for (const [name, def] of [['port', 3304], ['host', '0.0.0.0']]) {
  Object.defineProperty(settings, name, { enumerable: true, get: () => process.env[` + "`" + `GATE_${name.toUpperCase()}` + "`" + `] ?? def });
}
Object.freeze(settings);
const { port, host } = settings;
require('http').createServer((q, s) => s.end()).listen(+port, host);
`, ` => any 3304
GATE_PORT=7202 => any 7202`},
	{"node static block and private methods", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
class Config {
  static #values = {};
  static {
    for (const k of ['PORT', 'HOST']) if (k in process.env) this.#values[k] = process.env[k];
  }
  static get(key, fallback) { return this.#has(key) ? this.#values[key] : fallback; }
  static #has(key) { return Object.hasOwn(Config.#values, key); }
}
require('http').createServer((q, s) => s.end()).listen(Config.get('PORT', 3305), Config.get('HOST', '::1'));
`, ` => loopback 3305
PORT=7203 => loopback 7203`},
	{"node async generator of sources", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","private":true}
-- s.mjs --
import { createServer } from 'node:http';
import { readFile } from 'node:fs/promises';
async function* sources() {
  yield { port: 3306, host: '127.0.0.1' };
  try {
    yield JSON.parse(await readFile(new URL('./local.json', import.meta.url), 'utf8'));
  } catch {}
  if (process.env.PORT) yield { port: Number(process.env.PORT) };
}
let config = {};
for await (const s of sources()) config = { ...config, ...s };
createServer((q, s) => s.end()).listen(config.port, config.host);
-- local.json --
{"host": "0.0.0.0"}
`, ` => any 3306
PORT=7204 => any 7204`},
	{"ts with decorators and generics", `-- Procfile --
web: npx tsx s.ts
-- package.json --
{"name":"a","private":true,"dependencies":{"tsx":"4.0.0"}}
-- s.ts --
import { createServer } from 'node:http';
type Parse<T> = (raw: string) => T;
const registry = new Map<string, { key: string; parse: Parse<unknown> }>();
function env<T>(key: string, parse: Parse<T>) {
  return (_: undefined, ctx: ClassFieldDecoratorContext) => {
    registry.set(String(ctx.name), { key, parse });
    return (initial: T): T => {
      const raw = process.env[key];
      return raw === undefined ? initial : parse(raw);
    };
  };
}
class Settings {
  @env('SVC_PORT', Number) port = 3308;
  @env('SVC_HOST', String) host = '127.0.0.1';
}
const s = new Settings();
createServer((q, r) => r.end()).listen(s.port, s.host);
`, ` => loopback 3308
SVC_PORT=7206 => loopback 7206`},
	{"koa with compose of config functions", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"koa":"3.3.0"}}
-- s.js --
const Koa = require('koa');
const pipe = (...fns) => (x) => fns.reduce((v, f) => f(v), x);
const base = () => ({ port: 3309, host: 'localhost' });
const byStage = (c) => (process.env.NODE_ENV === 'production' ? { ...c, host: '0.0.0.0' } : c);
const byEnv = (c) => Object.assign(c, process.env.PORT && { port: Number(process.env.PORT) });
const { port, host } = pipe(base, byStage, byEnv)();
new Koa().listen(port, host === 'localhost' ? '127.0.0.1' : host);
`, ` => loopback 3309
NODE_ENV=production PORT=7207 => any 7207`},
	{"python settings module by name", `-- Procfile --
web: python3 run.py
-- gate/__init__.py --

-- gate/settings/__init__.py --

-- gate/settings/base.py --
HOST = "127.0.0.1"
PORT = 3310
-- gate/settings/live.py --
import os

from .base import *

HOST = "0.0.0.0"
PORT = int(os.environ.get("PORT", PORT + 1))
-- gate/conf.py --
import importlib
import os


class LazySettings:
    def __init__(self):
        self._module = None

    def __getattr__(self, name):
        if self._module is None:
            self._module = importlib.import_module(os.environ.get("GATE_SETTINGS", "gate.settings.base"))
        return getattr(self._module, name)


settings = LazySettings()
-- run.py --
import socketserver

from gate.conf import settings

socketserver.TCPServer((settings.HOST, settings.PORT), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 3310
GATE_SETTINGS=gate.settings.live => any 3311`},
	{"python literal eval and template", `-- Procfile --
web: python3 s.py
-- conf.txt --
{"port": 3311, "public": False}
-- s.py --
import ast
import os
import socketserver
from string import Template

with open(os.path.join(os.path.dirname(__file__), "conf.txt")) as f:
    conf = ast.literal_eval(f.read())
text = Template("$host:$port").substitute(host="0.0.0.0" if conf["public"] else "127.0.0.1", port=conf["port"])
host, port = text.split(":")
socketserver.TCPServer((host, int(port)), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 3311
GATE={port:7209,public:True} => loopback 3311`},
	{"python module getattr and partial", `-- Procfile --
web: python3 s.py
-- gateconf.py --
import os
from functools import partial

_get = partial(os.environ.get)
_defaults = dict(port=3312, host="127.0.0.1")


def __getattr__(name):
    try:
        default = _defaults[name.lower()]
    except KeyError:
        raise AttributeError(name) from None
    value = _get("GATE_" + name.upper(), default)
    return type(default)(value)
-- s.py --
from http.server import HTTPServer, BaseHTTPRequestHandler

import gateconf

HTTPServer((gateconf.HOST, gateconf.PORT), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 3312
GATE_PORT=7210 => loopback 7210`},
	{"python chain map and itemgetter", `-- Procfile --
web: python3 s.py --port 3313
-- s.py --
import argparse
import os
import socketserver
from collections import ChainMap
from operator import itemgetter

p = argparse.ArgumentParser()
p.add_argument("--port")
p.add_argument("--host")
args = {k: v for k, v in vars(p.parse_args()).items() if v is not None}
env = {k.lower(): v for k, v in os.environ.items() if k in ("PORT", "HOST")}
conf = ChainMap(args, env, {"port": 80, "host": "0.0.0.0"})
host, port = itemgetter("host", "port")(conf)
socketserver.TCPServer((host, int(port)), socketserver.BaseRequestHandler).serve_forever()
`, ` => any 3313
HOST=127.0.0.1 => loopback 3313`},
	{"python with context manager server and threads", `-- Procfile --
web: python3 s.py
-- s.py --
import os
import threading
from contextlib import contextmanager
from http.server import ThreadingHTTPServer, SimpleHTTPRequestHandler


@contextmanager
def running(port):
    httpd = ThreadingHTTPServer(("127.0.0.1", port), SimpleHTTPRequestHandler)
    t = threading.Thread(target=httpd.serve_forever)
    t.start()
    try:
        yield httpd
    finally:
        t.join()


with running(int(os.getenv("PORT", "3314"))) as server:
    print(server.server_address)
`, ` => loopback 3314
PORT=7211 => loopback 7211`},
	{"python async protocol factory", `-- Procfile --
web: python3 s.py
-- s.py --
import asyncio
import os


class Echo(asyncio.Protocol):
    def connection_made(self, transport):
        self.transport = transport

    def data_received(self, data):
        self.transport.write(data)


async def main():
    loop = asyncio.get_running_loop()
    server = await loop.create_server(Echo, "0.0.0.0", int(os.environ.get("PORT", 3315)))
    async with server:
        await server.serve_forever()


if __name__ == "__main__":
    try:
        asyncio.run(main())
    except KeyboardInterrupt:
        pass
`, ` => any 3315
PORT=7212 => any 7212`},
	{"python flag enum and socket", `-- Procfile --
web: python3 s.py
-- s.py --
import enum
import os
import socket


class Mode(enum.Flag):
    NONE = 0
    PUBLIC = enum.auto()
    REUSE = enum.auto()

    @classmethod
    def parse(cls, text):
        mode = cls.NONE
        for word in filter(None, text.split("|")):
            mode |= cls[word]
        return mode


mode = Mode.parse(os.environ.get("MODE", ""))
s = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
if mode & Mode.REUSE:
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
s.bind(("0.0.0.0" if Mode.PUBLIC in mode else "127.0.0.1", 3316))
s.listen()
while True:
    s.accept()[0].close()
`, ` => loopback 3316
MODE=PUBLIC|REUSE => any 3316`},
	{"flask with blueprint and before serving port file", `-- Procfile --
web: python3 app.py
-- requirements.txt --
flask==2.2.2
-- gate.port --
3317
-- other.port --
3318
-- app.py --
import os
from pathlib import Path

from flask import Blueprint, Flask

bp = Blueprint("main", __name__)


@bp.get("/")
def index():
    return "ok"


def read_port():
    path = Path(__file__).with_name(os.environ.get("PORT_FILE", "gate.port"))
    return int(path.read_text().strip())


app = Flask(__name__)
app.register_blueprint(bp)
if __name__ == "__main__":
    app.run(port=read_port())
`, ` => loopback 3317
PORT_FILE=other.port => loopback 3318`},
	{"go embed and generics", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23
-- stages.json --
{"dev": {"addr": "127.0.0.1:3319"}, "live": {"addr": ":3320"}}
-- main.go --
package main

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"log"
	"net/http"
	"os"
)

//go:embed stages.json
var raw []byte

type stage struct {
	Addr string ` + "`" + `json:"addr"` + "`" + `
}

func must[T any](v T, err error) T {
	if err != nil {
		log.Fatal(err)
	}
	return v
}

func decode[T any](b []byte) (out T, err error) {
	err = json.Unmarshal(b, &out)
	return
}

func pick[K comparable, V any](m map[K]V, k K) (V, error) {
	v, ok := m[k]
	if !ok {
		return v, fmt.Errorf("no %v", k)
	}
	return v, nil
}

func main() {
	name := os.Getenv("STAGE")
	if name == "" {
		name = "dev"
	}
	s := must(pick(must(decode[map[string]stage](raw)), name))
	log.Fatal(http.ListenAndServe(s.Addr, nil))
}
`, ` => loopback 3319
STAGE=live => any 3320`},
	{"go with interfaces for clock and config", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.23
-- main.go --
package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"strconv"
	"time"
)

type Lookup func(string) (string, bool)

type Config struct {
	Addr    string
	Timeout time.Duration
}

type ConfigError struct {
	Key string
	Err error
}

func (e *ConfigError) Error() string { return fmt.Sprintf("%s: %v", e.Key, e.Err) }
func (e *ConfigError) Unwrap() error { return e.Err }

func Parse(look Lookup) (Config, error) {
	cfg := Config{Addr: ":3321", Timeout: 10 * time.Second}
	if v, ok := look("ADDR"); ok {
		if _, port, err := net.SplitHostPort(v); err != nil {
			return cfg, &ConfigError{"ADDR", err}
		} else if n, err := strconv.Atoi(port); err != nil || n > 1<<16-1 {
			return cfg, &ConfigError{Key: "ADDR", Err: errors.New("bad port")}
		}
		cfg.Addr = v
	}
	if v, ok := look("TIMEOUT"); ok {
		d, err := time.ParseDuration(v)
		if err != nil {
			return cfg, &ConfigError{"TIMEOUT", err}
		}
		cfg.Timeout = d
	}
	return cfg, nil
}

func main() {
	cfg, err := Parse(os.LookupEnv)
	var ce *ConfigError
	if errors.As(err, &ce) {
		fmt.Fprintln(os.Stderr, ce)
		os.Exit(64)
	}
	ctx, cancel := context.WithCancel(context.Background())
	defer cancel()
	srv := http.Server{
		Addr:        cfg.Addr,
		ReadTimeout: cfg.Timeout,
		BaseContext: func(net.Listener) context.Context { return ctx },
	}
	if err := srv.ListenAndServe(); err != nil && err != http.ErrServerClosed {
		panic(err)
	}
}
`, ` => any 3321
LISTEN_FDS=1 => any 3321
ADDR=127.0.0.1:7214 => loopback 7214`},
	{"ruby option parser into hash and comparable", `-- Procfile --
web: ruby s.rb --port 3322
-- Gemfile --
source "https://rubygems.org"
-- s.rb --
require "optparse"
require "socket"

opts = {}
OptionParser.new do |o|
  o.on("--port=PORT", Integer)
  o.on("--[no-]public")
end.parse!(into: opts)

Endpoint = Struct.new(:host, :port, keyword_init: true) do
  def open = TCPServer.new(host, port)
  def to_s = "#{host}:#{port}"
end

e = Endpoint.new(host: ENV.fetch("HOST") { opts[:public] == false ? "::1" : "0.0.0.0" }, port: opts.fetch(:port, 80))
warn "on #{e}"
s = e.open
loop { s.accept.close }
`, ` => any 3322
HOST=127.0.0.1 => loopback 3322`},
	{"ruby erb yaml and dig", `-- Procfile --
web: ruby s.rb
-- config/gate.yml.erb --
http:
  host: <%= ENV.fetch("GATE_HOST", "0.0.0.0") %>
  port: <%= ENV["GATE_PORT"] || 3323 %>
-- s.rb --
require "erb"
require "yaml"
require "socket"

text = ERB.new(File.read(File.expand_path("config/gate.yml.erb", __dir__))).result
conf = YAML.safe_load(text)
s = TCPServer.new(conf.dig("http", "host"), conf.dig("http", "port"))
loop { s.accept.close }
`, ` => any 3323
GATE_PORT=7216 => any 7216`},
	{"ruby forwardable and singleton", `-- Procfile --
web: ruby -I. s.rb
-- conf.rb --
require "singleton"
require "forwardable"

class Conf
  include Singleton
  extend Forwardable
  def_delegators :@values, :[], :fetch, :key?

  def initialize
    @values = { host: "127.0.0.1", port: 3324 }
    ENV.each { |k, v| @values[k.downcase.to_sym] = v if %w[HOST PORT].include?(k) }
    @values[:port] = @values[:port].to_i
    @values.freeze
  end
end
-- s.rb --
require "conf"
require "socket"
c = Conf.instance
Socket.tcp_server_loop(c[:host], c.fetch(:port)) { |s, _| s.close }
`, ` => loopback 3324
PORT=7217 => loopback 7217`},
	{"php autoload and readonly config", `-- Procfile --
web: php index.php
-- composer.json --
{"require":{"php":">=8.1"}}
-- src/Config.php --
<?php
namespace Gate;

final class Config
{
    private const DEFAULTS = ['host' => '0.0.0.0', 'port' => 3325];

    private function __construct(public readonly string $host, public readonly int $port) {}

    public static function fromEnvironment(string $prefix = 'GATE_'): self
    {
        $values = [];
        foreach (self::DEFAULTS as $key => $default) {
            $raw = getenv($prefix . strtoupper($key));
            $values[$key] = $raw === false ? $default : match (gettype($default)) {
                'integer' => (int) $raw,
                default => $raw,
            };
        }
        return new self(...$values);
    }
}
-- index.php --
<?php
spl_autoload_register(function (string $class): void {
    $file = __DIR__ . '/src/' . str_replace('\\', '/', substr($class, strlen('Gate\\'))) . '.php';
    if (is_file($file)) {
        require $file;
    }
});

use Gate\Config;

$c = Config::fromEnvironment();
$s = stream_socket_server("tcp://{$c->host}:{$c->port}");
while ($x = stream_socket_accept($s, -1)) fclose($x);
`, ` => any 3325
GATE_PORT=7218 => any 7218`},
	{"php constants and closures", `-- Procfile --
web: php s.php
-- s.php --
<?php
define('STAGE', getenv('STAGE') ?: 'dev');
const PORTS = ['dev' => 3326, 'live' => 3327];
$listen = fn(string $host): Closure => function (int $port) use ($host) {
    $s = socket_create_listen($port) ?: exit(1);
    return $s;
};
$s = $listen('x')(constant('PORTS')[STAGE]);
while ($c = socket_accept($s)) socket_close($c);
`, ` => any 3326
STAGE=live => any 3327`},
	{"java scanner and uri", `-- Procfile --
web: java S.java
-- gate.conf --
# gate
port 3328
bind 0.0.0.0
-- S.java --
import java.io.*;
import java.net.*;
import java.nio.file.*;
import java.util.*;

public class S {
    public static void main(String[] args) throws IOException {
        Map<String, String> conf = new HashMap<>();
        try (Scanner in = new Scanner(Path.of("gate.conf"))) {
            while (in.hasNextLine()) {
                String line = in.nextLine().trim();
                if (line.isEmpty() || line.startsWith("#")) continue;
                String[] kv = line.split("\\s+", 2);
                conf.put(kv[0], kv[1]);
            }
        }
        String url = System.getenv("GATE_URL");
        if (url != null) {
            URI u = URI.create(url);
            conf.put("bind", u.getHost());
            conf.put("port", String.valueOf(u.getPort()));
        }
        ServerSocket s = new ServerSocket();
        s.bind(new InetSocketAddress(conf.get("bind"), Integer.parseInt(conf.get("port"))));
        while (true) s.accept().close();
    }
}
`, ` => any 3328
GATE_URL=tcp://127.0.0.1:7219 => loopback 7219`},
	{"java lines of files with streams", `-- Procfile --
web: java -cp out gate.Main
-- gate.env --
PORT=3329
HOST=127.0.0.1
-- src/gate/Env.java --
package gate;

import java.io.IOException;
import java.nio.file.*;
import java.util.Map;
import java.util.stream.*;

record Env(Map<String, String> values) {
    static Env load(String file) throws IOException {
        try (Stream<String> lines = Files.lines(Paths.get(file))) {
            return new Env(lines.filter(l -> l.contains("=")).map(l -> l.split("=", 2)).collect(Collectors.toMap(a -> a[0], a -> a[1])));
        }
    }

    String get(String key) {
        return System.getenv().getOrDefault(key, values.get(key));
    }
}
-- src/gate/Main.java --
package gate;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Main {
    public static void main(String[] args) throws Exception {
        Env env = Env.load("gate.env");
        HttpServer.create(new InetSocketAddress(env.get("HOST"), Integer.parseInt(env.get("PORT"))), 0).start();
    }
}
`, ` => loopback 3329
PORT=7220 => loopback 7220`},
	{"deno with env file parse and generics", `-- Procfile --
web: deno run -A main.ts
-- gate.txt --
port=3330
hostname=0.0.0.0
-- main.ts --
const text = Deno.readTextFileSync(new URL("gate.txt", import.meta.url).pathname);
const entries = text.split("\n").filter((l) => l.includes("=")).map((l) => l.split("=") as [string, string]);
const conf = Object.fromEntries(entries) as Record<"port" | "hostname", string>;
function get<T>(key: keyof typeof conf, parse: (s: string) => T): T {
  return parse(Deno.env.get(` + "`" + `GATE_${key.toUpperCase()}` + "`" + `) ?? conf[key]);
}
const server = Deno.serve({ port: get("port", Number), hostname: get("hostname", String), onListen: ({ port }) => console.log(port) }, () => new Response("ok"));
await server.finished;
`, ` => any 3330
GATE_PORT=7221 => any 7221`},
	{"bun with map of handlers and tls off", `-- Procfile --
web: bun main.ts
-- package.json --
{"name":"a","private":true}
-- tsconfig.json --
{"compilerOptions":{"paths":{"@/*":["./lib/*"]}}}
-- lib/env.ts --
const read = (k: string) => process.env[k];
export const env = {
  get port(): number { return Number(read("PORT") || 3331); },
  get host() { return read("HOST") ?? "0.0.0.0"; },
} as const;
-- main.ts --
import { env } from "@/env";
Bun.serve({ port: env.port, hostname: env.host, fetch: (req) => new Response(new URL(req.url).pathname) });
`, ` => any 3331
PORT=7222 => any 7222`},
	{"express with router files and config object", `-- Procfile --
web: node server.js
-- package.json --
{"name":"catalogue","private":true,"dependencies":{"express":"5.3.0"}}
-- config.js --
module.exports = {
  env: process.env.NODE_ENV || 'development',
  server: { port: parseInt(process.env.PORT || '3401', 10), host: process.env.HOST || '0.0.0.0' },
};
-- routes/stars.js --
const { Router } = require('express');
const router = Router();
router.get('/', (req, res) => res.json([]));
module.exports = router;
-- server.js --
const express = require('express');
const { server } = require('./config');
const app = express();
app.use(express.json());
app.use('/stars', require('./routes/stars'));
app.get('/', (req, res) => res.send('catalogue'));
app.listen(server.port, server.host, () => console.log(` + "`" + `on ${server.port}` + "`" + `));
`, ` => any 3401
PORT=7301 => any 7301`},
	{"fastify ts with env schema", `-- Procfile --
web: npx tsx src/main.ts
-- package.json --
{"name":"bookings","private":true,"type":"module","dependencies":{"fastify":"5.12.8","tsx":"4.0.0"}}
-- src/env.ts --
interface Env { readonly PORT: number; readonly HOST: string }
const number = (value: string | undefined, fallback: number): number => {
  if (!value) return fallback;
  const n = Number(value);
  if (!Number.isSafeInteger(n)) throw new Error('PORT must be a number');
  return n;
};
export const env: Env = Object.freeze({
  PORT: number(process.env.PORT, 3402),
  HOST: process.env.HOST ?? 'localhost',
});
-- src/main.ts --
import Fastify, { type FastifyInstance } from 'fastify';
import { env } from './env.js';
const app: FastifyInstance = Fastify({ logger: false });
app.get('/', async () => ({ status: 'open' }));
const address = await app.listen({ port: env.PORT, host: env.HOST === 'localhost' ? '127.0.0.1' : env.HOST });
console.log(address);
`, ` => loopback 3402
PORT=7302 HOST=0.0.0.0 => any 7302`},
	{"node http router by hand with graceful end", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate","private":true}
-- lib/server.js --
const http = require('http');
class Server {
  constructor(options = {}) {
    this.options = { port: 3403, host: '0.0.0.0', ...options };
    this.routes = new Map();
    this.server = http.createServer((req, res) => this.handle(req, res));
  }
  get(path, fn) { this.routes.set(` + "`" + `GET ${path}` + "`" + `, fn); return this; }
  handle(req, res) {
    const fn = this.routes.get(` + "`" + `${req.method} ${req.url}` + "`" + `);
    if (!fn) { res.writeHead(404); return res.end(); }
    fn(req, res);
  }
  async start() {
    const { port, host } = this.options;
    await new Promise((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen(port, host, resolve);
    });
    return this;
  }
  stop() { return new Promise((r) => this.server.close(r)); }
}
module.exports = Server;
-- index.js --
const Server = require('./lib/server');
const pick = (o, ...keys) => keys.reduce((all, k) => (o[k] === undefined ? all : { ...all, [k.split('_').pop().toLowerCase()]: Number(o[k]) }), {});
new Server(pick(process.env, 'APP_PORT', 'PORT'))
  .get('/', (q, s) => s.end('gate'))
  .start()
  .then((s) => process.on('SIGTERM', () => s.stop()));
`, ` => any 3403
APP_PORT=7303 => any 7303
PORT=7304 => any 7304`},
	{"koa behind a config singleton", `-- Procfile --
web: node src/app.js
-- package.json --
{"name":"forecast","private":true,"dependencies":{"koa":"3.3.0"}}
-- src/config.js --
let instance = null;
class Config {
  constructor() {
    if (instance) return instance;
    instance = this;
    this.prefix = 'KOA_';
  }
  get(name, fallback) {
    const v = process.env[this.prefix + name];
    return v === undefined ? fallback : v;
  }
  int(name, fallback) {
    const n = parseInt(this.get(name), 10);
    return Number.isNaN(n) ? fallback : n;
  }
}
module.exports = () => new Config();
-- src/app.js --
const Koa = require('koa');
const config = require('./config')();
const app = new Koa();
app.use(async (ctx) => { ctx.body = { ok: true }; });
module.exports = app;
if (require.main === module) {
  app.listen(config.int('PORT', 3405), config.get('HOST'));
}
`, ` => any 3405
KOA_PORT=7305 KOA_HOST=127.0.0.1 => loopback 7305`},
	{"socket io with http and port from file", `-- Procfile --
web: node chat.js
-- package.json --
{"name":"chat","private":true,"dependencies":{"socket.io":"4.8.4"}}
-- settings/ports.json --
{"development": 3406, "production": 3407}
-- chat.js --
const fs = require('fs');
const path = require('path');
const { createServer } = require('http');
const { Server } = require('socket.io');
const ports = JSON.parse(fs.readFileSync(path.resolve(__dirname, 'settings', 'ports.json')));
const http = createServer((req, res) => res.end('chat'));
const io = new Server(http, { serveClient: false });
io.on('connection', (socket) => socket.on('message', (m) => io.emit('message', m)));
http.listen(ports[process.env.NODE_ENV || 'development']);
`, ` => any 3406
NODE_ENV=production => any 3407`},
	{"hono on bun with basic env", `-- Procfile --
web: bun run src/index.ts
-- package.json --
{"name":"lens","private":true,"dependencies":{"hono":"4.13.19"}}
-- src/index.ts --
import { Hono } from "hono";
const app = new Hono();
app.get("/", (c) => c.text("lens"));
export default {
  port: Number(process.env.PORT ?? 3408),
  fetch: app.fetch,
};
`, ` => any 3408
PORT=7307 => any 7307`},
	{"flask factory with instance settings", `-- Procfile --
web: python3 wsgi.py
-- requirements.txt --
flask==2.2.2
-- catalogue/__init__.py --
import os

from flask import Flask, jsonify


class Settings:
    def __init__(self, prefix="CATALOGUE_"):
        self.prefix = prefix

    def __getitem__(self, key):
        return os.environ[self.prefix + key]

    def get(self, key, default=None, cast=None):
        try:
            value = self[key]
        except KeyError:
            return default
        return cast(value) if cast else value


settings = Settings()


def create_app():
    app = Flask(__name__)

    @app.route("/")
    def index():
        return jsonify(ok=True)

    return app
-- wsgi.py --
from catalogue import create_app, settings

app = create_app()

if __name__ == "__main__":
    app.run(host=settings.get("HOST", "127.0.0.1"), port=settings.get("PORT", 3409, int), use_reloader=False)
`, ` => loopback 3409
CATALOGUE_PORT=7308 => loopback 7308`},
	{"fastapi started by its own main with argparse", `-- Procfile --
web: python3 -m observatory.api --reload-off --port ${PORT:-3410}
-- requirements.txt --
fastapi==0.92.0
uvicorn==0.17.6
-- observatory/__init__.py --

-- observatory/api.py --
import argparse
import os

import uvicorn
from fastapi import FastAPI

app = FastAPI(title="observatory")


@app.get("/")
async def root():
    return {"dome": "closed"}


def main(argv=None):
    parser = argparse.ArgumentParser()
    parser.add_argument("-p", "--port", type=int, default=8000)
    parser.add_argument("--host", default=os.getenv("API_HOST", "0.0.0.0"))
    parser.add_argument("--reload-off", dest="reload", action="store_false")
    args = parser.parse_args(argv)
    uvicorn.run("observatory.api:app", host=args.host, port=args.port)


if __name__ == "__main__":
    main()
`, ` => any 3410
PORT=7309 => any 7309
API_HOST=127.0.0.1 => loopback 3410`},
	{"tornado with command line and config", `-- Procfile --
web: python3 -m dome.server --debug=false
-- requirements.txt --
tornado==6.2
-- dome/__init__.py --

-- dome/server.py --
import asyncio
import os

from tornado.options import define, options
from tornado.web import Application, RequestHandler

define("port", default=int(os.environ.get("DOME_PORT", 3413)), type=int)
define("debug", default=False, type=bool)


class Home(RequestHandler):
    def get(self):
        self.write({"dome": "open"})


def make_app():
    return Application([("/", Home)], debug=options.debug)


async def main():
    options.parse_command_line()
    make_app().listen(options.port)
    await asyncio.Event().wait()


if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 3413
DOME_PORT=7311 => any 7311`},
	{"django with gunicorn and settings from env", `-- Procfile --
web: gunicorn night.wsgi:application --bind "0.0.0.0:${PORT:-3414}" --workers 2
-- requirements.txt --
Django==3.2.25
gunicorn==20.1.0
-- manage.py --
import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "night.settings")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)
-- night/__init__.py --

-- night/settings.py --
import os

SECRET_KEY = os.environ.get("SECRET_KEY", "only here")
DEBUG = os.environ.get("DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("ALLOWED_HOSTS", "night.example").split(",")
ROOT_URLCONF = "night.urls"
WSGI_APPLICATION = "night.wsgi.application"
-- night/urls.py --
urlpatterns = []
-- night/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "night.settings")
application = get_wsgi_application()
`, ` => any 3414
PORT=7312 => any 7312`},
	{"go api with layered packages", `-- Procfile --
web: ./bin/api
-- go.mod --
module observatory

go 1.23
-- internal/env/env.go --
package env

import (
	"os"
	"strconv"
)

func String(key, def string) string {
	if v, ok := os.LookupEnv(key); ok {
		return v
	}
	return def
}

func Int(key string, def int) int {
	if v, err := strconv.Atoi(os.Getenv(key)); err == nil {
		return v
	}
	return def
}
-- internal/httpserver/server.go --
package httpserver

import (
	"context"
	"log/slog"
	"net/http"
	"time"
)

type Server struct {
	*http.Server
	log *slog.Logger
}

func New(addr string, h http.Handler, log *slog.Logger) *Server {
	return &Server{Server: &http.Server{Addr: addr, Handler: h, ReadHeaderTimeout: 5 * time.Second}, log: log}
}

func (s *Server) Run(ctx context.Context) error {
	errs := make(chan error, 1)
	go func() {
		s.log.Info("listening", "addr", s.Addr)
		errs <- s.ListenAndServe()
	}()
	select {
	case err := <-errs:
		return err
	case <-ctx.Done():
		return s.Shutdown(context.Background())
	}
}
-- cmd/api/main.go --
package main

import (
	"context"
	"fmt"
	"log/slog"
	"net/http"
	"os"
	"os/signal"
	"syscall"

	"observatory/internal/env"
	"observatory/internal/httpserver"
)

func routes() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("/", func(w http.ResponseWriter, r *http.Request) { fmt.Fprint(w, "ok") })
	return mux
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	addr := env.String("API_ADDR", fmt.Sprintf(":%d", env.Int("PORT", 3415)))
	log := slog.New(slog.NewTextHandler(os.Stderr, nil))
	if err := httpserver.New(addr, routes(), log).Run(ctx); err != nil {
		log.Error("stopped", "err", err)
		os.Exit(1)
	}
}
`, ` => any 3415
API_ADDR=127.0.0.1:7313 => loopback 7313
PORT=7314 => any 7314`},
	{"go chi with options", `-- Procfile --
web: ./gate -http 127.0.0.1:3416
-- go.mod --
module gate

go 1.23

require github.com/go-chi/chi/v5 v5.1.0
-- main.go --
package main

import (
	"flag"
	"net/http"
	"os"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
)

type options struct{ http string }

func (o *options) register(fs *flag.FlagSet) {
	fs.StringVar(&o.http, "http", ":8080", "address")
}

func (o *options) fromEnv() {
	if v := os.Getenv("GATE_HTTP"); v != "" {
		o.http = v
	}
}

func main() {
	var o options
	fs := flag.NewFlagSet(os.Args[0], flag.ExitOnError)
	o.register(fs)
	_ = fs.Parse(os.Args[1:])
	o.fromEnv()
	r := chi.NewRouter()
	r.Use(middleware.Logger)
	r.Get("/", func(w http.ResponseWriter, r *http.Request) { w.Write([]byte("gate")) })
	if err := http.ListenAndServe(o.http, r); err != nil {
		os.Exit(1)
	}
}
`, ` => loopback 3416
GATE_HTTP=:7315 => any 7315`},
	{"go json config with defaults method", `-- Procfile --
web: ./lens
-- go.mod --
module lens

go 1.23
-- lens.json --
{"listen": {"port": 3417}}
-- other.json --
{"listen": {"host": "0.0.0.0", "port": 3418}, "name": "other"}
-- main.go --
package main

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
)

type Config struct {
	Name   string ` + "`" + `json:"name"` + "`" + `
	Listen Listen ` + "`" + `json:"listen"` + "`" + `
}

type Listen struct {
	Host string ` + "`" + `json:"host"` + "`" + `
	Port int    ` + "`" + `json:"port"` + "`" + `
}

func (l Listen) String() string { return fmt.Sprintf("%s:%d", l.Host, l.Port) }

func Default() Config {
	return Config{Name: "lens", Listen: Listen{Host: "127.0.0.1", Port: 80}}
}

func (c *Config) Load(path string) error {
	data, err := os.ReadFile(path)
	if err != nil {
		return fmt.Errorf("read %s: %w", path, err)
	}
	return json.Unmarshal(data, c)
}

func main() {
	path := os.Getenv("LENS_CONFIG")
	if path == "" {
		path = "lens.json"
	}
	cfg := Default()
	if err := cfg.Load(path); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	fmt.Println(http.ListenAndServe(cfg.Listen.String(), nil))
}
`, ` => loopback 3417
LENS_CONFIG=other.json => any 3418`},
	{"sinatra modular with config ru on puma", `-- Procfile --
web: puma -p ${PORT:-3419} -e production
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra/base"

class App < Sinatra::Base
  get("/") { "app" }
end
-- config.ru --
require_relative "app"
run App
`, ` => any 3419
PORT=7318 => any 7318`},
	{"ruby plain rack on webrick by code", `-- Procfile --
web: ruby server.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- lib/app_config.rb --
class AppConfig
  attr_reader :port, :bind

  def self.load(env = ENV)
    new(port: Integer(env.fetch("PORT", "3420")), bind: env["BIND"] || "0.0.0.0")
  end

  def initialize(port:, bind:)
    @port = port
    @bind = bind
    raise ArgumentError, "port" unless (1..65_535).cover?(port)
  end
end
-- server.rb --
require "webrick"
require_relative "lib/app_config"

config = AppConfig.load
server = WEBrick::HTTPServer.new(Port: config.port, BindAddress: config.bind, AccessLog: [])
server.mount_proc "/" do |_req, res|
  res.body = "ok"
end
trap("INT") { server.shutdown }
server.start
`, ` => any 3420
PORT=7319 BIND=127.0.0.1 => loopback 7319`},
	{"php router with config array", `-- Procfile --
web: php -S ${HOST:-127.0.0.1}:${PORT:-3421} -t public
-- composer.json --
{"name":"observatory/catalogue","require":{"php":">=8.1"}}
-- public/index.php --
<?php
$config = require __DIR__ . '/../config.php';
echo $config['title'];
-- config.php --
<?php
return ['title' => getenv('TITLE') ?: 'catalogue'];
`, ` => loopback 3421
PORT=7320 HOST=0.0.0.0 => any 7320`},
	{"php socket server with config include", `-- Procfile --
web: php bin/relay.php
-- composer.json --
{"name":"observatory/relay","require":{"php":">=8.1"}}
-- config/dev.php --
<?php
return ['host' => '127.0.0.1', 'port' => 3422];
-- config/live.php --
<?php
return array_merge(require __DIR__ . '/dev.php', ['host' => '0.0.0.0']);
-- bin/relay.php --
<?php
$env = getenv('RELAY_ENV') ?: 'dev';
$file = dirname(__DIR__) . "/config/$env.php";
if (!file_exists($file)) {
    fwrite(STDERR, "no config\n");
    exit(2);
}
$config = require $file;
$port = (int) (getenv('RELAY_PORT') ?: $config['port']);
$server = stream_socket_server(sprintf('tcp://%s:%d', $config['host'], $port), $e, $m) or die($m);
while ($c = stream_socket_accept($server, -1)) { fclose($c); }
`, ` => loopback 3422
RELAY_ENV=live => any 3422
RELAY_PORT=7321 => loopback 7321`},
	{"java server with env and properties override", `-- Procfile --
web: java -cp out app.Main
-- src/app.properties --
server.port=3423
server.host=0.0.0.0
-- src/app/Settings.java --
package app;

import java.io.IOException;
import java.io.InputStream;
import java.util.Properties;

public class Settings {
    private static final Settings INSTANCE = new Settings();
    private final Properties properties = new Properties();

    private Settings() {
        try (InputStream in = getClass().getResourceAsStream("/app.properties")) {
            properties.load(in);
        } catch (IOException e) {
            throw new ExceptionInInitializerError(e);
        }
    }

    public static Settings get() {
        return INSTANCE;
    }

    public int port() {
        String env = System.getenv("APP_PORT");
        return Integer.parseInt(env != null ? env : properties.getProperty("server.port"));
    }

    public String host() {
        return properties.getProperty("server.host", "localhost");
    }
}
-- src/app/Main.java --
package app;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Main {
    public static void main(String[] args) throws Exception {
        Settings s = Settings.get();
        HttpServer server = HttpServer.create(new InetSocketAddress(s.host(), s.port()), 0);
        server.createContext("/", e -> { e.sendResponseHeaders(200, -1); e.close(); });
        server.start();
    }
}
`, ` => any 3423
APP_PORT=7322 => any 7322`},
	{"deno router with env class", `-- Procfile --
web: deno run --allow-net --allow-env server.ts
-- deno.json --
{}
-- server.ts --
class Env {
  static int(name: string, fallback: number): number {
    const v = Deno.env.get(name);
    if (v === undefined || v.trim() === "") return fallback;
    const n = Number(v);
    if (Number.isNaN(n)) throw new Error(` + "`" + `${name} is not a number` + "`" + `);
    return n;
  }
  static text(name: string, fallback: string) { return Deno.env.get(name) || fallback; }
}
const routes: Record<string, (req: Request) => Response> = {
  "/": () => new Response("ok"),
};
Deno.serve(
  { port: Env.int("PORT", 3424), hostname: Env.text("HOSTNAME_BIND", "0.0.0.0") },
  (req) => routes[new URL(req.url).pathname]?.(req) ?? new Response("no", { status: 404 }),
);
`, ` => any 3424
PORT=7323 => any 7323
HOSTNAME_BIND=127.0.0.1 => loopback 3424`},
	{"bun websocket server", `-- Procfile --
web: bun start.ts
-- package.json --
{"name":"live","private":true}
-- start.ts --
const config = { port: 3425, hostname: "0.0.0.0" };
for (const [key, name] of [["port", "WS_PORT"], ["hostname", "WS_HOST"]] as const) {
  const value = process.env[name];
  if (value) Object.assign(config, { [key]: key === "port" ? Number(value) : value });
}
Bun.serve({
  ...config,
  fetch(req, server) { return server.upgrade(req) ? undefined : new Response("no", { status: 426 }); },
  websocket: { message(ws, m) { ws.send(m); } },
});
`, ` => any 3425
WS_PORT=7324 => any 7324`},
	{"node port list tries by index", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const ports = [3501, 3502, 3503];
const index = Math.min(Number(process.env.INDEX ?? 0), ports.length - 1);
require('http').createServer((q, s) => s.end()).listen(ports[index]);
`, ` => any 3501
INDEX=2 => any 3503`},
	{"node ternary chain and template address", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const { STAGE: stage = 'dev', PORT } = process.env;
const host = stage === 'dev' ? '127.0.0.1' : stage === 'test' ? '::1' : '0.0.0.0';
const url = new URL(` + "`" + `http://${host.includes(':') ? ` + "`" + `[${host}]` + "`" + ` : host}:${PORT || 3504}` + "`" + `);
require('http').createServer((q, s) => s.end()).listen(url.port, url.hostname.replace(/^\[|\]$/g, ''));
`, ` => loopback 3504
STAGE=live => any 3504
STAGE=test PORT=7402 => loopback 7402`},
	{"node properties file", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- app.properties --
server.port=3505
server.address=127.0.0.1
-- s.js --
const fs = require('fs');
const props = fs.readFileSync(` + "`" + `${__dirname}/app.properties` + "`" + `, 'utf-8').trim().split('\n').reduce((o, l) => {
  const [k, ...v] = l.split('=');
  o[k.trim()] = v.join('=').trim();
  return o;
}, {});
const get = (k) => process.env[k.replaceAll('.', '_')] ?? props[k];
require('http').createServer((q, s) => s.end()).listen(get('server.port'), get('server.address'));
`, ` => loopback 3505
server_port=7403 => loopback 7403`},
	{"express with try catch around json", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"dependencies":{"express":"5.3.0"}}
-- s.js --
const express = require('express');
let config = { port: 3506 };
try {
  config = { ...config, ...JSON.parse(process.env.CONFIG || '{}') };
} catch (err) {
  console.warn('bad CONFIG:', err.message);
}
express().get('/', (q, s) => s.send('x')).listen;
const app = express();
app.listen(config.port);
`, ` => any 3506
CONFIG={port:7404} => any 3506
CONFIG=broken => any 3506`},
	{"ts config with record and satisfies", `-- Procfile --
web: npx tsx s.ts
-- package.json --
{"name":"a","private":true,"dependencies":{"tsx":"4.0.0"}}
-- s.ts --
import http from 'node:http';
type Region = 'north' | 'south';
const table = { north: { port: 3509, public: true }, south: { port: 3510, public: false } } as const satisfies Record<Region, { port: number; public: boolean }>;
function isRegion(x: unknown): x is Region { return typeof x === 'string' && x in table; }
const raw: unknown = process.env.REGION;
const region: Region = isRegion(raw) ? raw : 'south';
const { port, public: open } = table[region];
http.createServer((_q, s) => void s.end()).listen(port, open ? undefined : '127.0.0.1');
`, ` => loopback 3510
REGION=north => any 3509`},
	{"python config by dict of dicts", `-- Procfile --
web: python3 s.py
-- s.py --
import os
import socketserver

CONFIG = {
    "development": {"host": "127.0.0.1", "port": 3511},
    "production": {"host": "0.0.0.0", "port": 3512},
}
CONFIG["staging"] = dict(CONFIG["production"], port=3513)
env = os.environ.get("ENVIRONMENT", "development")
cfg = CONFIG[env]
with socketserver.ThreadingTCPServer((cfg["host"], cfg["port"]), socketserver.StreamRequestHandler) as srv:
    srv.serve_forever()
`, ` => loopback 3511
ENVIRONMENT=production => any 3512
ENVIRONMENT=staging => any 3513`},
	{"python getopt", `-- Procfile --
web: python3 s.py -p 3514 --host=0.0.0.0
-- s.py --
import getopt
import os
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler

opts, args = getopt.getopt(sys.argv[1:], "p:h:", ["port=", "host="])
port, host = os.environ.get("PORT"), "127.0.0.1"
for o, v in opts:
    if o in ("-p", "--port"):
        port = port or v
    elif o in ("-h", "--host"):
        host = v
HTTPServer((host, int(port)), BaseHTTPRequestHandler).serve_forever()
`, ` => any 3514
PORT=7408 => any 7408`},
	{"python json schema style defaults", `-- Procfile --
web: python3 s.py
-- schema.json --
{"port": {"type": "integer", "default": 3515, "min": 1}, "host": {"type": "string", "default": "127.0.0.1"}}
-- s.py --
import json
import os
import sys
import socketserver

CASTS = {"integer": int, "string": str}


def load(schema, env):
    out = {}
    for key, spec in schema.items():
        raw = env.get(f"GATE_{key.upper()}")
        value = spec["default"] if raw is None else CASTS[spec["type"]](raw)
        if "min" in spec and value < spec["min"]:
            print(f"{key} is too small", file=sys.stderr)
            sys.exit(1)
        out[key] = value
    return out


with open("schema.json", encoding="utf-8") as f:
    settings = load(json.load(f), os.environ)
socketserver.TCPServer((settings["host"], settings["port"]), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 3515
GATE_PORT=7409 => loopback 7409
GATE_PORT=-1 => exits`},
	{"flask with config from mapping and env file class", `-- Procfile --
web: python3 app.py
-- requirements.txt --
flask==2.2.2
-- config.py --
class Config(object):
    PORT = 3516
    HOST = "127.0.0.1"


class ProductionConfig(Config):
    HOST = "0.0.0.0"
    PORT = 3517
-- app.py --
import os

from flask import Flask

app = Flask(__name__)
app.config.from_object(os.environ.get("APP_SETTINGS", "config.Config"))


@app.route("/")
def home():
    return "x"


if __name__ == "__main__":
    app.run(app.config["HOST"], app.config["PORT"])
`, ` => loopback 3516
APP_SETTINGS=config.ProductionConfig => any 3517`},
	{"bottle app with env and server", `-- Procfile --
web: python3 s.py
-- requirements.txt --
bottle==0.12.23
waitress==2.1.2
-- s.py --
import os
from bottle import Bottle

app = Bottle()


@app.get("/")
def index():
    return "x"


app.run(host="0.0.0.0", port=int(os.environ.get("PORT", 3518)), server="waitress", quiet=True)
`, ` => any 3518
PORT=7411 => any 7411`},
	{"starlette run by hypercorn api", `-- Procfile --
web: python3 s.py
-- requirements.txt --
starlette==0.26.1
hypercorn==0.13.2
-- s.py --
import asyncio
import os

import hypercorn.asyncio
from hypercorn import Config
from starlette.applications import Starlette

app = Starlette()
config = Config()
config.bind = [f"127.0.0.1:{os.environ.get('PORT', '3519')}"]
asyncio.run(hypercorn.asyncio.serve(app, config))
`, ` => loopback 3519
PORT=7412 => loopback 7412`},
	{"go switch on mode with constants", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
)

type Mode string

const (
	Private Mode = "private"
	Public  Mode = "public"
)

func (m Mode) Host() (string, error) {
	switch m {
	case Private, "":
		return "127.0.0.1", nil
	case Public:
		return "0.0.0.0", nil
	}
	return "", fmt.Errorf("unknown mode %q", string(m))
}

const basePort = 3500

func main() {
	host, err := Mode(os.Getenv("MODE")).Host()
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", host, basePort+20), nil))
}
`, ` => loopback 3520
MODE=public => any 3520
MODE=nonsense => exits`},
	{"go tcp echo with listen config", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"context"
	"io"
	"log"
	"net"
	"os"
)

func main() {
	port := "3521"
	if p := os.Getenv("PORT"); p != "" {
		port = p
	}
	lc := net.ListenConfig{KeepAlive: -1}
	ln, err := lc.Listen(context.Background(), "tcp4", net.JoinHostPort("127.0.0.1", port))
	if err != nil {
		log.Fatal(err)
	}
	defer ln.Close()
	for {
		conn, err := ln.Accept()
		if err != nil {
			return
		}
		go func(c net.Conn) {
			defer c.Close()
			io.Copy(c, c)
		}(conn)
	}
}
`, ` => loopback 3521
PORT=7414 => loopback 7414`},
	{"go maps of handlers and default struct", `-- Procfile --
web: ./a -env live
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"flag"
	"fmt"
	"net/http"
	"os"
	"strconv"
)

type profile struct {
	Host string
	Port int
}

var profiles = map[string]profile{
	"dev":  {"127.0.0.1", 3522},
	"live": {Host: "0.0.0.0", Port: 3523},
}

func main() {
	name := flag.String("env", "dev", "profile")
	flag.Parse()
	p, ok := profiles[*name]
	if !ok {
		fmt.Fprintln(os.Stderr, "no such profile")
		os.Exit(2)
	}
	if s := os.Getenv("APP_PORT"); s != "" {
		n, err := strconv.ParseUint(s, 10, 16)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(2)
		}
		p.Port = int(n)
	}
	srv := http.Server{Addr: p.Host + ":" + strconv.Itoa(p.Port)}
	fmt.Println(srv.ListenAndServe())
}
`, ` => any 3523
APP_PORT=7415 => any 7415`},
	{"sinatra classic with configure and env", `-- Procfile --
web: ruby app.rb -e production
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"

configure do
  set :port, ENV.fetch("PORT", 3524)
  set :server_settings, timeout: 30
end

configure :production do
  set :bind, "0.0.0.0"
  disable :logging
end

get("/") { "ok" }
`, ` => any 3524
PORT=7416 => any 7416`},
	{"ruby tcp with inherited settings", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"

class Settings
  def host = "127.0.0.1"
  def port = Integer(ENV["GATE_PORT"] || default_port)

  private

  def default_port = 3526
end

class PublicSettings < Settings
  def host = "0.0.0.0"
  private def default_port = super + 1
end

settings = Object.const_get("#{(ENV["GATE_KIND"] || "").capitalize}Settings").new
server = TCPServer.open(settings.host, settings.port)
while (client = server.accept)
  client.close
end
`, ` => loopback 3526
GATE_KIND=public => any 3527`},
	{"php with static factory and enum", `-- Procfile --
web: php s.php
-- s.php --
<?php
enum Stage: string
{
    case Dev = 'dev';
    case Live = 'live';

    public static function current(): self
    {
        return self::from(getenv('STAGE') ?: self::Dev->value);
    }

    public function address(): string
    {
        return match ($this) {
            self::Dev => 'tcp://127.0.0.1:3528',
            self::Live => 'tcp://0.0.0.0:3529',
        };
    }
}

$server = stream_socket_server(Stage::current()->address());
while (is_resource($c = stream_socket_accept($server, -1))) {
    fclose($c);
}
`, ` => loopback 3528
STAGE=live => any 3529
STAGE=none => exits`},
	{"php built in server with env in script", `-- Procfile --
web: sh -c 'php -S "0.0.0.0:$LISTEN_PORT" -t .'
-- index.php --
ok
`, `LISTEN_PORT=7419 => any 7419
LISTEN_PORT=7420 => any 7420`},
	{"java with switch expression and var", `-- Procfile --
web: java S.java live
-- S.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Map;
import java.util.Optional;

public class S {
    static final Map<String, Integer> PORTS = Map.of("dev", 3530, "live", 3531);

    public static void main(String[] args) throws Exception {
        var stage = args.length == 0 ? "dev" : args[0];
        var host = switch (stage) {
            case "dev" -> "127.0.0.1";
            case "live", "test" -> "0.0.0.0";
            default -> throw new IllegalArgumentException(stage);
        };
        int port = Optional.ofNullable(System.getenv("PORT")).map(Integer::parseInt).orElse(PORTS.get(stage));
        var server = HttpServer.create();
        server.bind(new InetSocketAddress(host, port), 10);
        server.start();
    }
}
`, ` => any 3531
PORT=7421 => any 7421`},
	{"deno tcp with env permissions", `-- Procfile --
web: deno run --allow-net --allow-env=PORT s.ts
-- s.ts --
const port = Number(Deno.env.get("PORT") || "3533");
const listener = Deno.listen({ hostname: "127.0.0.1", port, transport: "tcp" });
for await (const c of listener) c.close();
`, ` => loopback 3533
PORT=7423 => loopback 7423`},
	{"bun node http with port fallback", `-- Procfile --
web: bun s.js
-- package.json --
{"name":"a","private":true,"type":"module"}
-- s.js --
import { createServer } from 'node:http';
createServer((q, s) => s.end('x')).listen(process.env.PORT ?? 3534, '0.0.0.0');
`, ` => any 3534
PORT=7424 => any 7424`},
}

func TestProved(t *testing.T) {
	t.Parallel()
	for _, c := range proved {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
