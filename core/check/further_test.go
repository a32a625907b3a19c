package check_test

import (
	"testing"
)

// further are programs that were written to see what is told of programs that nobody has
// seen. Each was run in the environments that stand beside it; what it did was read from the
// kernel.
var further = []struct{ name, tree, want string }{
	{"Node.js: convict with file per env", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"sky","dependencies":{"convict":"^6","express":"^4"}}
-- config/production.json --
{"server":{"port":8811}}
-- src/config.js --
const convict = require('convict');
const fs = require('fs');
const path = require('path');

const config = convict({
  env: { doc: 'mode', format: ['production', 'development', 'test'], default: 'development', env: 'NODE_ENV' },
  server: {
    host: { doc: 'ip', format: String, default: '0.0.0.0', env: 'BIND' },
    port: { doc: 'port', format: 'port', default: 8701, env: 'PORT', arg: 'port' },
  },
});

const file = path.join(__dirname, '..', 'config', ` + "`" + `${config.get('env')}.json` + "`" + `);
if (fs.existsSync(file)) {
  config.loadFile(file);
}
config.validate({ allowed: 'strict' });

module.exports = config;
-- src/index.js --
const express = require('express');
const config = require('./config');

const app = express();
app.get('/', (req, res) => res.json({ sky: 'clear' }));

const { host, port } = config.get('server');
app.listen(port, host, () => console.log('up'));
`, ` => any 8701
PORT=9701 => any 9701
NODE_ENV=production => any 8811`},
	{"Node.js: yaml with env interpolation", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"t","type":"module","dependencies":{"js-yaml":"^4","hono":"^4","@hono/node-server":"^1"}}
-- sky.yaml --
server:
  host: 0.0.0.0
  port: ${SKY_PORT:-8707}
-- index.mjs --
import { readFileSync } from 'node:fs';
import yaml from 'js-yaml';
import { Hono } from 'hono';
import { serve } from '@hono/node-server';

const raw = readFileSync(new URL('./sky.yaml', import.meta.url), 'utf8');
const text = raw.replace(/\$\{(\w+)(?::-([^}]*))?\}/g, (_, name, fallback = '') => process.env[name] ?? fallback);
const { server } = yaml.load(text);
const app = new Hono();
app.get('/', (c) => c.text('sky'));
serve({ fetch: app.fetch, port: server.port, hostname: server.host });
`, ` => any 8707
SKY_PORT=9707 => any 9707`},
	{"Node.js: dotenv flow by hand", `-- Procfile --
web: node d.js
-- package.json --
{"name":"t","dependencies":{"dotenv":"^16"}}
-- .env --
PORT=8715
-- .env.production --
PORT=8815
-- d.js --
const dotenv = require('dotenv');
const mode = process.env.NODE_ENV || 'development';
for (const f of [` + "`" + `.env.${mode}.local` + "`" + `, ` + "`" + `.env.${mode}` + "`" + `, '.env']) dotenv.config({ path: f });
require('http').createServer((_, r) => r.end()).listen(process.env.PORT);
`, ` => any 8715
NODE_ENV=production => any 8815
NODE_ENV=production PORT=9715 => any 9715`},
	{"Python: cherrypy", `-- Procfile --
web: python3 c.py
-- c.py --
import os
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


cherrypy.config.update({
    "server.socket_host": "0.0.0.0",
    "server.socket_port": int(os.environ.get("PORT", 8733)),
    "engine.autoreload.on": False,
})
cherrypy.quickstart(Root())
`, ` => any 8733
PORT=9733 => any 9733`},
	{"Ruby: tcp server with yaml config and erb", `-- Procfile --
web: ruby tcp.rb
-- config.yml --
default: &default
  host: 0.0.0.0
  port: <%= ENV.fetch('TICK_PORT', 8746) %>
development:
  <<: *default
production:
  <<: *default
  host: 127.0.0.1
-- tcp.rb --
require 'socket'
require 'yaml'
require 'erb'
mode = ENV['APP_ENV'] || 'development'
conf = YAML.load(ERB.new(File.read(File.join(__dir__, 'config.yml'))).result, aliases: true)[mode]
server = TCPServer.new(conf['host'], conf['port'])
loop do
  c = server.accept
  c.puts Time.now
  c.close
end
`, ` => any 8746
TICK_PORT=9746 => any 9746`},
	{"Go: fiber with functional options", `-- Procfile --
web: ./app
-- go.mod --
module sky

go 1.22

require github.com/gofiber/fiber/v2 v2.52.5
-- main.go --
package main

import (
	"log"
	"os"

	"github.com/gofiber/fiber/v2"
)

type server struct {
	app  *fiber.App
	host string
	port string
}

type option func(*server)

func withPort(p string) option {
	return func(s *server) {
		if p != "" {
			s.port = p
		}
	}
}

func withHost(h string) option { return func(s *server) { s.host = h } }

func newServer(opts ...option) *server {
	s := &server{app: fiber.New(), port: "8755"}
	for _, o := range opts {
		o(s)
	}
	return s
}

func (s *server) run() error { return s.app.Listen(s.host + ":" + s.port) }

func main() {
	log.Fatal(newServer(withHost("127.0.0.1"), withPort(os.Getenv("PORT"))).run())
}
`, ` => loopback 8755
PORT=9755 => loopback 9755`},
	{"Deno: deno task", `-- Procfile --
web: deno task start
-- deno.json --
{"tasks":{"start":"deno run -A src/server.ts --port=8803"}}
-- src/args.ts --
export function flag(name: string, fallback?: string): string | undefined {
  const prefix = ` + "`" + `--${name}=` + "`" + `;
  const hit = Deno.args.find((a) => a.startsWith(prefix));
  return hit ? hit.slice(prefix.length) : fallback;
}
-- src/server.ts --
import { flag } from "./args.ts";
const port = parseInt(Deno.env.get("SKY_PORT") ?? flag("port", "80")!);
const listener = Deno.listen({ port });
for await (const conn of listener) {
  conn.close();
}
`, ` => any 8803
SKY_PORT=9803 => any 9803`},
	{"a script: bash script case", `-- Procfile --
web: bash bin/run web
-- bin/run --
#!/usr/bin/env bash
set -euo pipefail
cd "$(dirname "$0")/.."
case "${1:-web}" in
  web) exec node web/server.js --port="${PORT:-8834}" ;;
  worker) exec node worker.js ;;
  *) echo "unknown" >&2; exit 64 ;;
esac
-- web/server.js --
const arg = process.argv.find((a) => a.startsWith('--port='));
const port = arg ? arg.split('=')[1] : 80;
require('http').createServer((q, r) => r.end()).listen(port, '0.0.0.0');
-- worker.js --
setInterval(() => {}, 1000);
`, ` => any 8834
PORT=9834 => any 9834`},
	{"Node.js: promise chain", `-- Procfile --
web: node p.js
-- package.json --
{"name":"t"}
-- p.js --
const { readFile } = require('fs').promises;
const http = require('http');
readFile(require('path').resolve(__dirname, 'settings.json'), 'utf-8')
  .then(JSON.parse)
  .then((settings) => Object.assign({}, settings, process.env.PORT && { port: +process.env.PORT }))
  .then(({ port, host }) => new Promise((ok, no) => {
    const s = http.createServer((q, r) => r.end());
    s.on('error', no);
    s.listen(port, host, () => ok(s));
  }))
  .then((s) => console.log('at', s.address().port))
  .catch((e) => { console.error(e); process.exitCode = 1; });
-- settings.json --
{"port": 8846, "host": "127.0.0.1"}
`, ` => loopback 8846
PORT=9846 => loopback 9846`},
	{"Node.js: reduce over env prefix", `-- Procfile --
web: node c.js
-- package.json --
{"name":"t"}
-- c.js --
const defaults = { port: 8847, host: '0.0.0.0' };
const fromEnv = Object.entries(process.env)
  .filter(([k]) => k.startsWith('SKY_'))
  .reduce((acc, [k, v]) => ({ ...acc, [k.slice(4).toLowerCase()]: v }), {});
const cfg = { ...defaults, ...fromEnv };
require('http').createServer((q, r) => r.end()).listen(cfg.port, cfg.host);
`, ` => any 8847
SKY_PORT=9847 => any 9847
SKY_PORT=9847 SKY_HOST=127.0.0.1 => loopback 9847`},
	{"Node.js: typescript enum with tsx", `-- Procfile --
web: tsx src/main.ts
-- package.json --
{"name":"t","type":"module","dependencies":{"tsx":"*"}}
-- src/stage.ts --
export enum Stage {
  Dev = 'dev',
  Prod = 'prod',
}
export const ports: Record<Stage, number> = {
  [Stage.Dev]: 8848,
  [Stage.Prod]: 8948,
};
export function current(): Stage {
  const s = process.env.STAGE as Stage | undefined;
  return s && Object.values(Stage).includes(s) ? s : Stage.Dev;
}
-- src/main.ts --
import { createServer } from 'node:http';
import { current, ports, Stage } from './stage.js';
const stage: Stage = current();
const port: number = process.env.PORT ? Number(process.env.PORT) : ports[stage];
createServer((_req, res) => { res.end(stage); }).listen(port);
`, ` => any 8848
STAGE=prod => any 8948
STAGE=prod PORT=9848 => any 9848`},
	{"Python: class hierarchy flask config", `-- Procfile --
web: python3 wsgi.py
-- config.py --
import os


class Base:
    HOST = "127.0.0.1"
    PORT = 8862


class Production(Base):
    HOST = "0.0.0.0"
    PORT = int(os.environ.get("PORT") or 8962)


by_name = {"development": Base, "production": Production}
-- wsgi.py --
import os
from flask import Flask
from config import by_name

app = Flask(__name__)
app.config.from_object(by_name[os.environ.get("APP_ENV", "development")])

if __name__ == "__main__":
    app.run(app.config["HOST"], app.config["PORT"])
`, ` => loopback 8862
APP_ENV=production => any 8962
APP_ENV=production PORT=9862 => any 9862`},
	{"Python: signal and settings environ", `-- Procfile --
web: python3 a.py
-- a.py --
import os
import re
from http.server import HTTPServer, BaseHTTPRequestHandler


def parse_listen(text, default_host="0.0.0.0"):
    m = re.fullmatch(r"(?:(?P<host>[^:]+):)?(?P<port>\d+)", text)
    if not m:
        raise SystemExit("bad LISTEN")
    return m.group("host") or default_host, int(m["port"])


HTTPServer(parse_listen(os.environ.get("LISTEN", "8869")), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8869
LISTEN=9869 => any 9869
LISTEN=127.0.0.1:9869 => loopback 9869`},
	{"Ruby: socket api", `-- Procfile --
web: ruby raw.rb 8874
-- raw.rb --
require 'socket'
port = Integer(ARGV.fetch(0, 80))
addr = Addrinfo.tcp(ENV.fetch('BIND', '0.0.0.0'), port)
sock = Socket.new(addr.afamily, Socket::SOCK_STREAM)
sock.bind(addr)
sock.listen(5)
loop { c, _ = sock.accept; c.close }
`, ` => any 8874
BIND=::1 => loopback 8874`},
	{"Java: enum and switch", `-- Procfile --
web: java Dome.java
-- Dome.java --
import java.net.ServerSocket;
import java.net.InetSocketAddress;
import java.util.Map;

public class Dome {
    enum Stage { DEV, PROD }
    static InetSocketAddress address(Map<String, String> env) {
        Stage stage = Stage.valueOf(env.getOrDefault("STAGE", "DEV"));
        int port = Integer.parseInt(env.getOrDefault("PORT", "8892"));
        return switch (stage) {
            case DEV -> new InetSocketAddress("localhost", port);
            case PROD -> new InetSocketAddress(port);
        };
    }
    public static void main(String[] args) throws Exception {
        var ss = new ServerSocket();
        ss.bind(address(System.getenv()));
        for (;;) ss.accept().close();
    }
}
`, ` => loopback 8892
STAGE=PROD PORT=9892 => any 9892
STAGE=odd => exits`},
	{"Node.js: layered config merge", `-- Procfile --
web: node server/index.js
-- package.json --
{"name":"t"}
-- server/config/base.js --
module.exports = { http: { host: 'localhost', port: 8901, tls: false }, log: { level: 'info' } };
-- server/config/production.js --
module.exports = { http: { host: '0.0.0.0' } };
-- server/config/merge.js --
const isPlain = (v) => v !== null && typeof v === 'object' && !Array.isArray(v);
module.exports = function merge(target, ...sources) {
  for (const src of sources) {
    for (const key of Object.keys(src || {})) {
      if (isPlain(src[key]) && isPlain(target[key])) merge(target[key], src[key]);
      else if (src[key] !== undefined) target[key] = src[key];
    }
  }
  return target;
};
-- server/config/index.js --
const fs = require('fs');
const path = require('path');
const merge = require('./merge');
const env = process.env.NODE_ENV || 'development';
const file = path.join(__dirname, env + '.js');
const overrides = { http: { port: process.env.HTTP_PORT ? Number(process.env.HTTP_PORT) : undefined } };
module.exports = Object.freeze(merge({}, require('./base'), fs.existsSync(file) ? require(file) : {}, overrides));
-- server/index.js --
const http = require('http');
const { http: cfg } = require('./config');
const srv = http.createServer((req, res) => { res.writeHead(200); res.end(); });
srv.listen(cfg.port, cfg.host);
`, ` => loopback 8901
NODE_ENV=production => any 8901
NODE_ENV=production HTTP_PORT=9901 => any 9901`},
	{"Node.js: env file flag", `-- Procfile --
web: node --env-file=.env.local app.mjs
-- package.json --
{"name":"t","type":"module"}
-- .env.local --
# local
PORT="8902"
export HOST='0.0.0.0'
-- app.mjs --
import { createServer } from 'node:http';
import { env } from 'node:process';
createServer((_, r) => r.end()).listen(+env.PORT, env.HOST);
`, ` => any 8902
PORT=9902 => any 9902`},
	{"Node.js: listens in event emitter chain", `-- Procfile --
web: node main.js
-- package.json --
{"name":"t"}
-- app.js --
const { EventEmitter } = require('events');
const http = require('http');
class App extends EventEmitter {
  constructor(options = {}) {
    super();
    this.options = { port: 80, host: '::', ...options };
    this.once('ready', this.#open.bind(this));
  }
  #open({ override } = {}) {
    const { port, host } = this.options;
    this.server = http.createServer().listen(override ?? port, host, () => this.emit('open', this));
  }
  start() {
    process.nextTick(() => this.emit('ready', { override: process.env.PORT }));
    return this;
  }
}
exports.App = App;
-- main.js --
const { App } = require('./app');
new App({ port: 8904 }).start().on('open', (a) => console.log(a.options));
`, ` => any 8904
PORT=9904 => any 9904`},
	{"Node.js: koa with config class getters", `-- Procfile --
web: node k.js
-- package.json --
{"name":"t","dependencies":{"koa":"^2"}}
-- config.js --
class Config {
  constructor(prefix, env) { this.prefix = prefix; this.env = env; }
  get(name, fallback) {
    const v = this.env[` + "`" + `${this.prefix}_${name}` + "`" + `.toUpperCase()];
    return v === undefined || v === '' ? fallback : v;
  }
  int(name, fallback) {
    const v = this.get(name);
    if (v === undefined) return fallback;
    const n = Number(v);
    if (!Number.isInteger(n)) throw new TypeError(` + "`" + `${name} must be an integer` + "`" + `);
    return n;
  }
  get port() { return this.int('port', 8910); }
  get host() { return this.get('host', '0.0.0.0'); }
}
module.exports = new Config('koa', process.env);
-- k.js --
const Koa = require('koa');
const config = require('./config');
const app = module.exports = new Koa();
app.use(async (ctx, next) => { await next(); ctx.body = 'x'; });
if (!module.parent) app.listen(config.port, config.host);
`, ` => any 8910
KOA_HOST=127.0.0.1 KOA_PORT=9910 => loopback 9910`},
	{"Python: importlib settings", `-- Procfile --
web: python3 main.py
-- conf/__init__.py --
-- conf/dev.py --
HOST = "127.0.0.1"
PORT = 8921
-- conf/prod.py --
import os
from .dev import *  # noqa
HOST = "0.0.0.0"
PORT = int(os.environ.get("PORT", PORT))
-- main.py --
import importlib
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

conf = importlib.import_module(os.environ.get("SETTINGS", "conf.dev"))


class H(BaseHTTPRequestHandler):
    pass


if __name__ == "__main__":
    HTTPServer((conf.HOST, conf.PORT), H).serve_forever()
`, ` => loopback 8921
SETTINGS=conf.prod => any 8921
SETTINGS=conf.prod PORT=9921 => any 9921`},
	{"Python: enum and match", `-- Procfile --
web: python3.11 m.py
-- m.py --
import enum
import os
import socketserver


class Stage(str, enum.Enum):
    TEST = "test"
    LIVE = "live"

    @property
    def port(self):
        match self:
            case Stage.TEST:
                return 8931
            case Stage.LIVE:
                return int(os.environ.get("PORT") or 8932)


stage = Stage(os.environ.get("STAGE", "test").lower())
socketserver.TCPServer(("0.0.0.0" if stage is Stage.LIVE else "127.0.0.1", stage.port), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 8931
STAGE=live => any 8932
STAGE=LIVE PORT=9931 => any 9931`},
	{"Python: starlette config", `-- Procfile --
web: python3 -m sky
-- .env --
SKY_PORT=8935
-- sky/__init__.py --
-- sky/config.py --
from starlette.config import Config
from starlette.datastructures import CommaSeparatedStrings

config = Config(".env", env_prefix="SKY_") if False else Config(".env")
PORT = config("SKY_PORT", cast=int, default=80)
HOSTS = config("SKY_HOSTS", cast=CommaSeparatedStrings, default="127.0.0.1")
-- sky/__main__.py --
import uvicorn
from starlette.applications import Starlette
from . import config

uvicorn.run(Starlette(), host=config.HOSTS[0], port=config.PORT)
`, ` => loopback 8935
SKY_PORT=9935 => loopback 9935
SKY_PORT=x => exits`},
	{"Python: http server subclass with defaults", `-- Procfile --
web: python3 -u -m gate.server
-- gate/__init__.py --
-- gate/server.py --
import os
from functools import partial
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from typing import NamedTuple


class Address(NamedTuple):
    host: str = "127.0.0.1"
    port: int = 8936

    @classmethod
    def from_environ(cls, prefix):
        values = {}
        for name, kind in cls.__annotations__.items():
            raw = os.environ.get(f"{prefix}_{name.upper()}")
            if raw is not None:
                values[name] = kind(raw)
        return cls(**values)


class Gate(ThreadingHTTPServer):
    allow_reuse_address = True

    def __init__(self, address, directory="."):
        super().__init__(address, partial(SimpleHTTPRequestHandler, directory=directory))


def main():
    with Gate(Address.from_environ("GATE")) as server:
        server.serve_forever()


if __name__ == "__main__":
    main()
`, ` => loopback 8936
GATE_HOST=0.0.0.0 GATE_PORT=9936 => any 9936`},
	{"Ruby: config dsl instance eval", `-- Procfile --
web: ruby bin/gate
-- bin/gate --
#!/usr/bin/env ruby
require_relative '../lib/gate/server'
Gate::Server.configure do
  host '0.0.0.0'
  port ENV['GATE_PORT'] || 8942
end.start
-- lib/gate/server.rb --
require 'socket'
module Gate
  class Server
    def self.configure(&block)
      new.tap { |s| s.instance_eval(&block) }
    end
    %i[host port].each do |name|
      define_method(name) do |value = nil|
        value.nil? ? instance_variable_get("@#{name}") : instance_variable_set("@#{name}", value)
      end
    end
    def start
      server = TCPServer.open(@host, Integer(@port))
      while (client = server.accept)
        client.close
      end
    end
  end
end
`, ` => any 8942
GATE_PORT=9942 => any 9942`},
	{"Ruby: pattern match", `-- Procfile --
web: ruby m.rb
-- m.rb --
require 'webrick'
host, port =
  case (ENV['LISTEN'] || '8943').split(':')
  in [port] then ['0.0.0.0', port.to_i]
  in [host, port] then [host, port.to_i]
  end
WEBrick::HTTPServer.new(BindAddress: host, Port: port).start
`, ` => any 8943
LISTEN=127.0.0.1:9943 => loopback 9943
LISTEN=9943 => any 9943`},
	{"Ruby: puma config with bind and stage", `-- Procfile --
web: bundle exec puma
-- Gemfile --
source 'https://rubygems.org'
gem 'puma'
gem 'rack'
-- config.ru --
app = Rack::Builder.new do
  map('/health') { run ->(_) { [200, {}, ['ok']] } }
  run ->(_) { [404, {}, []] }
end
run app
-- config/puma.rb --
rack_env = ENV['RACK_ENV'] || 'development'
if rack_env == 'production'
  bind "tcp://0.0.0.0:#{ENV.fetch('PORT')}"
else
  bind 'tcp://127.0.0.1:8944'
end
threads 1, 2
`, ` => loopback 8944
RACK_ENV=production PORT=9944 => any 9944`},
	{"Go: app struct run with ctx and errors", `-- Procfile --
web: ./app -listen :8952
-- go.mod --
module sky

go 1.22
-- cmd/app/main.go --
package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"os"

	"sky/internal/web"
)

func run(ctx context.Context, args []string, getenv func(string) string, stderr io.Writer) error {
	fs := flag.NewFlagSet(args[0], flag.ContinueOnError)
	fs.SetOutput(stderr)
	listen := fs.String("listen", "", "address")
	if err := fs.Parse(args[1:]); err != nil {
		return err
	}
	opts := web.Options{Listen: "127.0.0.1:80"}
	if v := getenv("APP_LISTEN"); v != "" {
		opts.Listen = v
	}
	if *listen != "" {
		opts.Listen = *listen
	}
	return web.New(opts).Serve(ctx)
}

func main() {
	if err := run(context.Background(), os.Args, os.Getenv, os.Stderr); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
-- internal/web/web.go --
package web

import (
	"context"
	"net"
	"net/http"
)

type Options struct{ Listen string }

type Server struct {
	opts Options
	mux  *http.ServeMux
}

func New(o Options) *Server {
	s := &Server{opts: o, mux: http.NewServeMux()}
	s.mux.HandleFunc("/", s.index)
	return s
}

func (s *Server) index(w http.ResponseWriter, r *http.Request) {}

func (s *Server) Serve(ctx context.Context) error {
	var lc net.ListenConfig
	ln, err := lc.Listen(ctx, "tcp", s.opts.Listen)
	if err != nil {
		return err
	}
	srv := &http.Server{Handler: s.mux, BaseContext: func(net.Listener) context.Context { return ctx }}
	return srv.Serve(ln)
}
`, ` => any 8952
APP_LISTEN=127.0.0.1:9952 => any 8952`},
	{"Go: generic env helper", `-- Procfile --
web: ./app
-- go.mod --
module sky

go 1.22
-- env.go --
package main

import (
	"fmt"
	"os"
	"strconv"
)

func Env[T any](name string, def T, parse func(string) (T, error)) T {
	raw, ok := os.LookupEnv(name)
	if !ok {
		return def
	}
	v, err := parse(raw)
	if err != nil {
		panic(fmt.Errorf("%s: %w", name, err))
	}
	return v
}

func str(s string) (string, error) { return s, nil }

func port(s string) (uint16, error) {
	n, err := strconv.ParseUint(s, 10, 16)
	return uint16(n), err
}
-- main.go --
package main

import (
	"log"
	"net/http"
	"net/netip"
)

func main() {
	ip := netip.MustParseAddr(Env("BIND", "127.0.0.1", str))
	addr := netip.AddrPortFrom(ip, Env("PORT", 8953, port))
	log.Fatal(http.ListenAndServe(addr.String(), nil))
}
`, ` => loopback 8953
PORT=9953 => loopback 9953
PORT=bad => exits`},
	{"Java: classes in files", `-- Procfile --
web: java -cp out obs.Main
-- src/obs/Main.java --
package obs;

import obs.config.Env;
import obs.http.Web;

public class Main {
    public static void main(String[] args) throws Exception {
        Env env = new Env(System.getenv());
        Web.builder().host(env.get("SKY_HOST").orElse("0.0.0.0")).port(env.integer("SKY_PORT", 8961)).build().start();
    }
}
-- src/obs/config/Env.java --
package obs.config;

import java.util.Map;
import java.util.Optional;

public final class Env {
    private final Map<String, String> values;

    public Env(Map<String, String> values) {
        this.values = Map.copyOf(values);
    }

    public Optional<String> get(String name) {
        return Optional.ofNullable(values.get(name)).map(String::trim).filter(s -> !s.isEmpty());
    }

    public int integer(String name, int fallback) {
        return get(name).map(Integer::valueOf).orElse(fallback);
    }
}
-- src/obs/http/Web.java --
package obs.http;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;

public final class Web {
    private final String host;
    private final int port;

    private Web(Builder b) {
        this.host = b.host;
        this.port = b.port;
    }

    public static Builder builder() {
        return new Builder();
    }

    public void start() throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(host, port), 0);
        server.createContext("/", new Ok());
        server.start();
    }

    public static class Builder {
        private String host = "localhost";
        private int port;

        public Builder host(String h) {
            this.host = h;
            return this;
        }

        public Builder port(int p) {
            this.port = p;
            return this;
        }

        public Web build() {
            return new Web(this);
        }
    }
}
-- src/obs/http/Ok.java --
package obs.http;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;

class Ok implements HttpHandler {
    @Override
    public void handle(HttpExchange e) throws IOException {
        e.sendResponseHeaders(200, -1);
    }
}
`, ` => any 8961
SKY_PORT=9961 => any 9961`},
	{"PHP: php config array and env helper", `-- Procfile --
web: php server.php
-- config/app.php --
<?php
return [
    'env' => env('APP_ENV', 'local'),
    'server' => ['host' => env('APP_ENV') === 'production' ? '0.0.0.0' : '127.0.0.1', 'port' => (int) env('APP_PORT', 8971)],
];
-- helpers.php --
<?php
if (!function_exists('env')) {
    function env(string $key, mixed $default = null): mixed
    {
        $value = $_ENV[$key] ?? getenv($key);
        return $value === false ? $default : $value;
    }
}
function config(string $path)
{
    static $items = [];
    [$file, $rest] = explode('.', $path, 2);
    $items[$file] ??= require __DIR__ . "/config/$file.php";
    return array_reduce(explode('.', $rest), fn ($c, $k) => $c[$k] ?? null, $items[$file]);
}
-- server.php --
<?php
require_once 'helpers.php';
$address = config('app.server.host') . ':' . config('app.server.port');
$socket = stream_socket_server("tcp://$address", $no, $msg) or die("$msg\n");
for (;;) {
    if ($c = stream_socket_accept($socket, 3600)) { fclose($c); }
}
`, ` => loopback 8971
APP_PORT=9971 => loopback 9971
APP_ENV=production => any 8971`},
	{"Node.js: proxy and api in one", `-- Procfile --
web: node proxy.mjs
-- package.json --
{"name":"t"}
-- proxy.mjs --
import http from 'node:http';
const target = new URL(process.env.UPSTREAM ?? 'http://127.0.0.1:10905');
const listen = process.env.LISTEN ?? '127.0.0.1:10904';
const at = listen.lastIndexOf(':');
const host = at < 0 ? undefined : listen.slice(0, at);
const port = Number(listen.slice(at + 1));
http.createServer((req, res) => {
  const p = http.request({ host: target.hostname, port: target.port, path: req.url, method: req.method }, (r) => r.pipe(res));
  p.on('error', () => { res.statusCode = 502; res.end(); });
  req.pipe(p);
}).listen({ port, host });
`, ` => loopback 10904
UPSTREAM=http://127.0.0.1:4000 LISTEN=0.0.0.0:10004 => any 10004
LISTEN=10004 => any 10004`},
	{"Node.js: yargs serve command", `-- Procfile --
web: node cli.mjs serve --port 10006 --no-public
-- package.json --
{"name":"t","dependencies":{"yargs":"^17"}}
-- cli.mjs --
import yargs from 'yargs';
import { hideBin } from 'yargs/helpers';
import http from 'http';
yargs(hideBin(process.argv))
  .env('SKY')
  .command('serve', 'serve', (y) => y
    .option('port', { type: 'number', default: 80 })
    .option('public', { type: 'boolean', default: true }),
  (argv) => {
    http.createServer((q, r) => r.end()).listen(argv.port, argv.public ? '0.0.0.0' : '127.0.0.1');
  })
  .demandCommand(1)
  .strict()
  .parse();
`, ` => loopback 10006
SKY_PUBLIC=true => loopback 10006`},
	{"Node.js: symbol registry and weakmap", `-- Procfile --
web: node s.js
-- package.json --
{"name":"t"}
-- s.js --
const kPort = Symbol('port');
const secrets = new WeakMap();
class Gate {
  constructor(port) { this[kPort] = port; secrets.set(this, { host: '127.0.0.1' }); }
  get [Symbol.toStringTag]() { return 'Gate'; }
  *addresses() { yield { port: this[kPort], host: secrets.get(this).host }; }
  open() { for (const a of this.addresses()) require('net').createServer().listen(a); }
}
new Gate(+(process.env.PORT || 10912)).open();
`, ` => loopback 10912
PORT=10011 => loopback 10011`},
	{"Python: aiohttp app with cleanup ctx and config dict", `-- Procfile --
web: python3 catalogue.py --config conf.json
-- conf.json --
{"http": {"host": "0.0.0.0", "port": 10923}}
-- catalogue.py --
import argparse
import json
import os
from collections import ChainMap

from aiohttp import web

DEFAULTS = {"host": "127.0.0.1", "port": 80}


def settings(path):
    with open(path, encoding="utf-8") as f:
        from_file = json.load(f)["http"]
    from_env = {k: os.environ[f"CATALOGUE_{k.upper()}"] for k in DEFAULTS if f"CATALOGUE_{k.upper()}" in os.environ}
    return ChainMap(from_env, from_file, DEFAULTS)


async def hello(request):
    return web.json_response({"stars": 0})


if __name__ == "__main__":
    ap = argparse.ArgumentParser()
    ap.add_argument("--config", required=True)
    ns = ap.parse_args()
    s = settings(ns.config)
    app = web.Application()
    app.router.add_get("/", hello)
    web.run_app(app, host=s["host"], port=int(s["port"]), print=None)
`, ` => any 10923
CATALOGUE_PORT=10023 => any 10023`},
	{"Python: wsgi with thread and queue", `-- Procfile --
web: python3 srv.py 10025
-- srv.py --
import os
import sys
import threading
from socketserver import ThreadingMixIn
from wsgiref.simple_server import WSGIRequestHandler, WSGIServer


class Server(ThreadingMixIn, WSGIServer):
    daemon_threads = True


def app(environ, start_response):
    start_response("204 No Content", [])
    return []


def serve(host, port):
    httpd = Server((host, port), WSGIRequestHandler)
    httpd.set_app(app)
    t = threading.Thread(target=httpd.serve_forever, daemon=False)
    t.start()
    return t


def main(argv):
    port = int(argv[1]) if argv[1:] else 8000
    serve(os.environ.get("HOST", "localhost"), port).join()


if __name__ == "__main__":
    sys.exit(main(sys.argv))
`, ` => loopback 10025
HOST=0.0.0.0 => any 10025`},
	{"Python: uvicorn logging with custom loop", `-- Procfile --
web: python3 run.py
-- run.py --
import logging
import os
from typing import Callable, Optional, TypeVar

import uvicorn

T = TypeVar("T")
log = logging.getLogger(__name__)


def setting(name: str, default: T, convert: Optional[Callable[[str], T]] = None) -> T:
    raw = os.environ.get(name)
    if raw is None:
        log.debug("%s: default", name)
        return default
    return (convert or type(default))(raw)


async def app(scope, receive, send):
    ...


class Runner:
    def __init__(self, **options):
        self.options = {"log_level": "info", **options}

    def __call__(self):
        uvicorn.Server(uvicorn.Config(app, **self.options)).run()


if __name__ == "__main__":
    Runner(host=setting("WEB_HOST", "0.0.0.0"), port=setting("WEB_PORT", 10927))()
`, ` => any 10927
WEB_PORT=10027 => any 10027
WEB_PORT=10027 WEB_HOST=::1 => loopback 10027`},
	{"Python: asyncio protocol factory unix and tcp", `-- Procfile --
web: python3 echo.py
-- echo.py --
import asyncio
import os
from urllib.parse import urlsplit


class Echo(asyncio.Protocol):
    def connection_made(self, transport):
        self.t = transport

    def data_received(self, data):
        self.t.write(data)


async def main():
    url = urlsplit(os.environ.get("ECHO_BIND", "tcp://127.0.0.1:10928"))
    loop = asyncio.get_running_loop()
    if url.scheme == "unix":
        server = await loop.create_unix_server(Echo, url.path)
    elif url.scheme == "tcp":
        server = await loop.create_server(Echo, url.hostname, url.port)
    else:
        raise SystemExit(f"unknown scheme {url.scheme}")
    await server.serve_forever()


asyncio.run(main())
`, ` => loopback 10928
ECHO_BIND=tcp://0.0.0.0:10028 => any 10028`},
	{"Ruby: webrick servlet with yaml", `-- Procfile --
web: ruby bin/serve.rb config/server.yml
-- config/server.yml --
development:
  port: 10932
  bind: 127.0.0.1
production:
  port: 80
  bind: 0.0.0.0
-- bin/serve.rb --
# frozen_string_literal: true
require "webrick"
require "yaml"

class Server
  Config = Struct.new(:port, :bind)

  def self.from(path)
    section = YAML.safe_load_file(path).fetch(ENV.fetch("APP_ENV", "development"))
    new(Config.new(*section.values_at("port", "bind")))
  end

  def initialize(config)
    @config = config
    @config.port = ENV["PORT"].to_i unless ENV["PORT"].to_s.empty?
  end

  def run
    server = WEBrick::HTTPServer.new(Port: @config.port, BindAddress: @config.bind, Logger: WEBrick::Log.new(File::NULL))
    server.mount_proc("/") { |_req, res| res.body = "ok" }
    trap("TERM") { server.shutdown }
    server.start
  end
end

Server.from(ARGV.first).run
`, ` => loopback 10932
APP_ENV=production PORT=10032 => any 10032`},
	{"Ruby: optparse with env and gserver style", `-- Procfile --
web: ruby -Ilib exe/ticker --bind 0.0.0.0:10035
-- exe/ticker --
#!/usr/bin/env ruby
require 'ticker/cli'
Ticker::CLI.start(ARGV)
-- lib/ticker/cli.rb --
require 'optparse'
require 'ticker/server'
module Ticker
  module CLI
    module_function

    def start(argv)
      options = { bind: ENV.fetch('TICKER_BIND', '127.0.0.1:10935') }
      parser = OptionParser.new { |o| o.on('--bind ADDR') { |v| options[:bind] = v } }
      parser.parse(argv)
      host, port = options[:bind].split(':', 2)
      Server.new(host: host, port: Integer(port)).run
    end
  end
end
-- lib/ticker/server.rb --
require 'socket'
module Ticker
  class Server
    attr_reader :host, :port
    def initialize(host:, port:)
      @host, @port = host, port
    end

    def run
      Socket.tcp_server_loop(host, port) { |sock, _addr| sock.close }
    end
  end
end
`, ` => any 10035
TICKER_BIND=127.0.0.1:1 => any 10035`},
	{"Go: connect graceful with config file flags", `-- Procfile --
web: ./app -config app.json
-- go.mod --
module star

go 1.22
-- app.json --
{"addr": "0.0.0.0", "port": 10941, "timeouts": {"read": "5s"}}
-- main.go --
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"strconv"
	"time"
)

type duration time.Duration

func (d *duration) UnmarshalText(b []byte) error {
	v, err := time.ParseDuration(string(b))
	*d = duration(v)
	return err
}

type config struct {
	Addr     string ` + "`" + `json:"addr"` + "`" + `
	Port     int    ` + "`" + `json:"port"` + "`" + `
	Timeouts struct {
		Read duration ` + "`" + `json:"read"` + "`" + `
	} ` + "`" + `json:"timeouts"` + "`" + `
}

func load(path string) (c config, err error) {
	c.Port = 80
	f, err := os.Open(path)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return c, nil
	case err != nil:
		return c, err
	}
	defer f.Close()
	err = json.NewDecoder(f).Decode(&c)
	return c, err
}

func main() {
	path := flag.String("config", "none.json", "file")
	flag.Parse()
	c, err := load(*path)
	if err != nil {
		slog.Error("config", "err", err)
		os.Exit(2)
	}
	if p, err := strconv.Atoi(os.Getenv("STAR_PORT")); err == nil && p > 0 {
		c.Port = p
	}
	server := http.Server{Addr: fmt.Sprint(c.Addr, ":", c.Port), ReadTimeout: time.Duration(c.Timeouts.Read)}
	http.Handle("/", http.RedirectHandler("/sky", http.StatusFound))
	if err := server.ListenAndServe(); err != nil {
		slog.Error("serve", "err", err)
	}
}
`, ` => any 10941
STAR_PORT=10041 => any 10041`},
	{"Go: gorilla with interface and factory map", `-- Procfile --
web: ./app
-- go.mod --
module star

go 1.22
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
)

type runner interface{ run() error }

type web struct{ addr string }
type raw struct{ addr string }

func (w web) run() error { return http.ListenAndServe(w.addr, nil) }

func (r *raw) run() error {
	l, err := net.Listen("tcp4", r.addr)
	if err != nil {
		return err
	}
	for {
		c, err := l.Accept()
		if err != nil {
			return err
		}
		c.Close()
	}
}

var kinds = map[string]func(string) runner{
	"web": func(a string) runner { return web{a} },
	"tcp": func(a string) runner { return &raw{addr: a} },
}

func getenv(k, d string) string {
	if v, ok := os.LookupEnv(k); ok {
		return v
	}
	return d
}

func main() {
	make, ok := kinds[getenv("SERVER", "web")]
	if !ok {
		log.Fatal("no such server")
	}
	log.Fatal(make(getenv("ADDR", ":10942")).run())
}
`, ` => any 10942
SERVER=tcp ADDR=127.0.0.1:10042 => loopback 10042`},
	{"Go: cobra persistent flags bound to viper", `-- Procfile --
web: ./app --port 10043
-- go.mod --
module star

go 1.22

require (
	github.com/spf13/cobra v1.8.1
	github.com/spf13/viper v1.19.0
)
-- main.go --
package main

import (
	"fmt"
	"net/http"

	"github.com/spf13/cobra"
	"github.com/spf13/viper"
)

func main() {
	cmd := &cobra.Command{
		Use:          "star",
		SilenceUsage: true,
		RunE: func(*cobra.Command, []string) error {
			return http.ListenAndServe(fmt.Sprintf("%s:%d", viper.GetString("host"), viper.GetInt("port")), nil)
		},
	}
	cmd.Flags().Int("port", 10943, "port")
	cmd.Flags().String("host", "0.0.0.0", "host")
	viper.SetEnvPrefix("star")
	viper.AutomaticEnv()
	_ = viper.BindPFlags(cmd.Flags())
	cobra.CheckErr(cmd.Execute())
}
`, ` => any 10043
STAR_HOST=127.0.0.1 => loopback 10043`},
	{"Java: maven style with interface and lambda", `-- Procfile --
web: java -cp classes obs.App --server.port=10051
-- src/main/java/obs/App.java --
package obs;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

public class App {
    interface Source extends Function<String, Optional<String>> {
        default Source or(Source next) {
            return key -> apply(key).or(() -> next.apply(key));
        }
    }

    public static void main(String[] args) throws Exception {
        Map<String, String> flags = Arrays.stream(args)
            .filter(a -> a.startsWith("--") && a.contains("="))
            .map(a -> a.substring(2).split("=", 2))
            .collect(Collectors.toMap(p -> p[0], p -> p[1]));
        Source cli = key -> Optional.ofNullable(flags.get(key));
        Source env = key -> Optional.ofNullable(System.getenv(key.toUpperCase().replace('.', '_')));
        Source all = cli.or(env);
        int port = all.apply("server.port").map(Integer::parseInt).orElse(10951);
        InetAddress host = all.apply("server.address").isPresent() ? InetAddress.getByName(all.apply("server.address").get()) : InetAddress.getLoopbackAddress();
        HttpServer s = HttpServer.create(new InetSocketAddress(host, port), 0);
        s.createContext("/", e -> { e.sendResponseHeaders(200, -1); e.close(); });
        s.start();
    }
}
`, ` => loopback 10051
SERVER_PORT=10052 => loopback 10051`},
	{"PHP: php composer autoload psr4", `-- Procfile --
web: php bin/console serve --port=10061
-- composer.json --
{"name":"obs/gate","autoload":{"psr-4":{"Gate\\":"src/"}}}
-- vendor/autoload.php --
<?php
spl_autoload_register(function (string $class): void {
    $prefix = 'Gate\\';
    if (str_starts_with($class, $prefix)) {
        require __DIR__ . '/../src/' . str_replace('\\', '/', substr($class, strlen($prefix))) . '.php';
    }
});
-- bin/console --
#!/usr/bin/env php
<?php
require dirname(__DIR__) . '/vendor/autoload.php';
exit((new Gate\Console\Application())->run(array_slice($argv, 1)));
-- src/Console/Application.php --
<?php
namespace Gate\Console;

class Application
{
    private array $commands = ['serve' => Serve::class];

    public function run(array $args): int
    {
        $name = array_shift($args) ?? 'help';
        $options = [];
        foreach ($args as $arg) {
            if (preg_match('/^--([\w-]+)(?:=(.*))?$/', $arg, $m)) {
                $options[$m[1]] = $m[2] ?? true;
            }
        }
        $class = $this->commands[$name] ?? null;
        return $class ? (new $class())->handle($options) : 1;
    }
}
-- src/Console/Serve.php --
<?php
namespace Gate\Console;

class Serve
{
    public function handle(array $options): int
    {
        $host = getenv('GATE_HOST') ?: '0.0.0.0';
        $port = (int) ($options['port'] ?? 10961);
        $server = stream_socket_server("tcp://{$host}:{$port}", $code, $message);
        if ($server === false) {
            return $code;
        }
        while ($client = stream_socket_accept($server, -1)) {
            fclose($client);
        }
        return 0;
    }
}
`, ` => any 10061
GATE_HOST=127.0.0.1 => loopback 10061`},
	{"Deno: deno config module and class", `-- Procfile --
web: deno run --allow-all src/main.ts
-- deno.json --
{"imports":{"@/":"./src/"}}
-- src/config.ts --
export class Config {
  static #cached?: Config;
  private constructor(readonly port: number, readonly hostname: string) {}
  static get current(): Config {
    return this.#cached ??= new Config(
      Number.parseInt(Deno.env.get("DOME_PORT") ?? "10971", 10),
      Deno.env.has("DOME_PUBLIC") ? "0.0.0.0" : "127.0.0.1",
    );
  }
}
-- src/main.ts --
import { Config } from "@/config.ts";
const { port, hostname } = Config.current;
const ac = new AbortController();
Deno.serve({ port, hostname, signal: ac.signal, onListen: ({ port }) => console.log(port) }, () => Response.json({}));
`, ` => loopback 10971
DOME_PORT=10071 => loopback 10071`},
	{"Node.js: srvx", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"t","type":"module","dependencies":{"srvx":"^1"}}
-- a.mjs --
import { serve } from 'srvx';
serve({ fetch: () => new Response('x') });
`, ` => any 3000
PORT=10101 => any 10101
PORT=x HOST=127.0.0.1 => exits
HOST=127.0.0.1 => loopback 3000`},
	{"Node.js: srvx options", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"t","type":"module","dependencies":{"srvx":"^1"}}
-- a.mjs --
import { serve } from 'srvx';
serve({ port: 10102, hostname: '0.0.0.0', fetch: () => new Response('x') });
`, ` => any 10102
PORT=10101 HOST=127.0.0.1 => any 10102`},
	{"Node.js: h3", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"t","type":"module","dependencies":{"h3":"^2"}}
-- a.mjs --
import { H3, serve } from 'h3';
const app = new H3().get('/', () => 'x');
serve(app, { port: process.env.PORT ?? 10104 });
`, ` => any 10104
PORT=10103 => any 10103`},
	{"Python: werkzeug make_server", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from werkzeug.serving import make_server
make_server("0.0.0.0", int(os.environ.get("PORT", 10106)), lambda e, s: [], threaded=True).serve_forever()
`, ` => any 10106
PORT=10105 => any 10105`},
	{"Python: listener", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from multiprocessing.connection import Listener
with Listener(("127.0.0.1", int(os.environ.get("PORT", 10109))), authkey=b"x") as l:
    while True:
        l.accept().close()
`, ` => loopback 10109
PORT=10108 => loopback 10108`},
	{"Python: docxmlrpc and wsgiserver", `-- Procfile --
web: python3 a.py
-- a.py --
from xmlrpc.server import DocXMLRPCServer
DocXMLRPCServer(("127.0.0.1", 10110), logRequests=False).serve_forever()
`, ` => loopback 10110`},
	{"Python: twisted listenSSL free", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from twisted.internet import protocol, reactor
f = protocol.ServerFactory()
f.protocol = protocol.Protocol
reactor.listenTCP(10112, f, 50, os.environ.get("ADDR", ""))
reactor.run()
`, ` => any 10112
ADDR=127.0.0.1 => loopback 10112`},
}

func TestFurther(t *testing.T) {
	t.Parallel()
	for _, c := range further {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
