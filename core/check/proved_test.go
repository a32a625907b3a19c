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
