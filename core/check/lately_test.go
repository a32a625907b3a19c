package check_test

import "testing"

// latelySeen are the last servers that were written, and what each did in the environments
// beside it.
var latelySeen = []struct{ name, tree, want string }{
	{"bottle with another server", `-- Procfile --
web: python app.py
-- app.py --
import os
import bottle

app = bottle.Bottle()
bottle.run(app, server=os.environ.get("SERVER", "wsgiref"), host="0.0.0.0", port=int(os.environ.get("PORT", 7816)), quiet=True)
-- requirements.txt --
bottle
waitress
`, ` => any 7816
SERVER=waitress PORT=6615 => any 6615
SERVER=nothing => exits`},
	{"hypercorn by its api", `-- Procfile --
web: python app.py
-- app.py --
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

config = Config()
config.bind = os.environ.get("BIND", "127.0.0.1:7817").split(",")
asyncio.run(serve(app, config))
-- requirements.txt --
hypercorn
`, ` => loopback 7817
BIND=0.0.0.0:6616,127.0.0.1:6617 => any 6616 & loopback 6617`},
	{"gunicorn programmatic application", `-- Procfile --
web: python app.py
-- app.py --
import os
from gunicorn.app.base import BaseApplication


def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]


class Standalone(BaseApplication):
    def __init__(self, application, options=None):
        self.options = options or {}
        self.application = application
        super().__init__()

    def load_config(self):
        for key, value in self.options.items():
            if key in self.cfg.settings and value is not None:
                self.cfg.set(key.lower(), value)

    def load(self):
        return self.application


if __name__ == "__main__":
    Standalone(app, {"bind": "%s:%s" % ("0.0.0.0", os.environ.get("PORT", "7818")), "workers": 1}).run()
-- requirements.txt --
gunicorn
`, ` => any 7818
PORT=6618 => any 6618`},
	{"a variable that is missing under nounset", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/bash
set -euo pipefail
echo "with $WORKERS"
exec python3 -m http.server "${PORT:-7901}"
`, ` => exits
WORKERS=1 => any 7901`},
	{"one that is only asked about", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/sh
set -eu
if [ -n "${DEBUG:-}" ]; then set -x; fi
name="$HOME/x"
exec python3 -m http.server 7902
`, ` => any 7902`},
	{"one that is set before", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/sh
set -u
. ./defaults.sh
[ "${A+set}" = set ] || A=2
echo "$A $B"
exec python3 -m http.server "$((7900 + A))"
-- defaults.sh --
B=3
`, ` => any 7902
A=1 => any 7901`},
	{"entry that templates a config file by sed free", `-- Procfile --
web: ./entrypoint.sh
-- entrypoint.sh --
#!/bin/sh
set -e
ROLE="${ROLE:-web}"
echo "starting $ROLE"
if [ "$ROLE" = "migrate" ]; then
  exit 0
fi
cat > /tmp/t79.conf <<CONF
port=${PORT:-8101}
CONF
exec python3 -m http.server "${PORT:-8101}" --bind 0.0.0.0
`, ` => any 8101
PORT=6901 => any 6901
ROLE=migrate => exits`},
	{"start script that counts cores", `-- Procfile --
web: bash start.sh
-- start.sh --
cores=$(nproc 2>/dev/null || echo 1)
threads=$(( cores > 4 ? 4 : cores ))
export THREADS=$threads
exec node server.js
-- server.js --
require('http').createServer().listen(process.env.PORT || 8102, '0.0.0.0');
`, ` => any 8102
PORT=6902 => any 6902`},
	{"script with options by while and shift", `-- Procfile --
web: bash run.sh --host 0.0.0.0 --port=8103 --verbose
-- run.sh --
host=127.0.0.1
port=${PORT:-8000}
verbose=0
while [[ $# -gt 0 ]]; do
  case "$1" in
    --host) host="$2"; shift 2 ;;
    --port=*) port="${PORT:-${1#*=}}"; shift ;;
    -v|--verbose) ((verbose++)) || true; shift ;;
    --) shift; break ;;
    *) echo "unknown $1" >&2; exit 64 ;;
  esac
done
(( verbose )) && echo "on $host:$port"
exec python3 -m http.server --bind "$host" "$port"
`, ` => any 8103
PORT=6903 => any 6903`},
	{"script that loads functions and a table", `-- Procfile --
web: bash bin/up live
-- bin/up --
#!/usr/bin/env bash
here="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
source "$here/lib/stages.bash"
stage="${1:-dev}"
load_stage "$stage" || { echo "no stage $stage"; exit 1; }
exec python3 -m http.server "$STAGE_PORT" --bind "$STAGE_HOST"
-- lib/stages.bash --
load_stage() {
  case "$1" in
    dev) STAGE_HOST=127.0.0.1 STAGE_PORT=8104 ;;
    live) STAGE_HOST=0.0.0.0; STAGE_PORT=8105 ;;
    *) return 1 ;;
  esac
}
`, ` => any 8105
 => any 8105`},
	{"makefile with a phony run and env file", `-- Procfile --
web: make run
-- .env --
PORT=8106
-- Makefile --
include .env
export
.PHONY: run build
build:
	@echo built
run: build
	python3 -m http.server $(PORT) --bind 127.0.0.1
`, ` => loopback 8106
PORT=6905 => loopback 8106`},
	{"npm start through another script with an environment", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"npm run -s serve","serve":"HOST=0.0.0.0 node -r ./preload.js server.js"}}
-- preload.js --
process.env.PORT ||= '8107';
-- server.js --
require('http').createServer().listen(process.env.PORT, process.env.HOST);
`, ` => any 8107
PORT=6906 => any 6906`},
	{"node event emitter app with options object merge", `-- Procfile --
web: node index.js --port 8108
-- package.json --
{"name":"a"}
-- index.js --
const { parseArgs } = require('util');
const App = require('./app');
const { values } = parseArgs({ options: { port: { type: 'string', default: '8109' } } });
const app = new App({ port: +values.port, host: process.env.APP_HOST });
app.on('ready', ({ address, port }) => console.log(address, port));
app.start();
-- app.js --
const EventEmitter = require('events');
const http = require('http');
const defaults = { host: '127.0.0.1', port: 80 };
module.exports = class App extends EventEmitter {
  constructor(options = {}) {
    super();
    for (const [k, v] of Object.entries(options)) if (v === undefined) delete options[k];
    this.options = { ...defaults, ...options };
  }
  start() {
    const { port, host } = this.options;
    this.server = http.createServer((q, s) => s.end()).listen(port, host, () => this.emit('ready', this.server.address()));
    return this;
  }
};
`, ` => loopback 8108
APP_HOST=0.0.0.0 => any 8108`},
	{"node retry with a backoff promise and a late listen", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"a","type":"module"}
-- index.mjs --
import { setTimeout as sleep } from 'node:timers/promises';
import http from 'node:http';
let attempts = 0;
async function connect() {
  if (++attempts < 3) throw new Error('not yet');
  return { attempts };
}
async function retry(fn, { times = 5, wait = 10 } = {}) {
  for (let i = 1; ; i++) {
    try { return await fn(); } catch (e) { if (i >= times) throw e; await sleep(wait * i); }
  }
}
const db = await retry(connect);
http.createServer((q, s) => s.end(String(db.attempts))).listen(process.env.PORT ?? 8100 + db.attempts * 3);
`, ` => any 8109
PORT=6908 => any 6908`},
	{"node mixins and a frozen registry", `-- Procfile --
web: node index.js
-- package.json --
{"name":"a"}
-- index.js --
const http = require('http');
const Listens = (Base) => class extends Base {
  listen() { return http.createServer().listen(this.port, this.host); }
};
const Public = (Base) => class extends Base { get host() { return '0.0.0.0'; } };
class Service { constructor(port) { this.port = port; } get host() { return 'localhost'; } }
const registry = Object.freeze({
  web: class Web extends Listens(Public(Service)) { constructor() { super(8110); } },
  admin: class Admin extends Listens(Service) { constructor() { super(8111); } },
});
const Chosen = registry[process.env.SERVICE ?? 'web'];
new Chosen().listen();
`, ` => any 8110
SERVICE=admin => loopback 8111`},
	{"python plugin by entry names and getattr chain", `-- Procfile --
web: python main.py
-- main.py --
import importlib
import os

spec = os.environ.get("BACKEND", "backends.simple:Server")
module, _, name = spec.partition(":")
cls = getattr(importlib.import_module(module), name)
cls.from_env(os.environ).run()
-- backends/__init__.py --
-- backends/simple.py --
import http.server


class Server:
    host, port = "127.0.0.1", 8112
    factory = http.server.HTTPServer

    @classmethod
    def from_env(cls, env):
        self = cls()
        self.port = int(env.get("PORT", cls.port))
        return self

    def run(self):
        with self.factory((self.host, self.port), http.server.SimpleHTTPRequestHandler) as s:
            s.serve_forever()
-- backends/threaded.py --
import http.server
from . import simple


class Server(simple.Server):
    host = "0.0.0.0"
    factory = http.server.ThreadingHTTPServer
`, ` => loopback 8112
BACKEND=backends.threaded:Server => any 8112`},
	{"python context managers and exit stack", `-- Procfile --
web: python app.py
-- app.py --
import contextlib
import os
import threading
from socketserver import ThreadingTCPServer, BaseRequestHandler

ThreadingTCPServer.allow_reuse_address = True


@contextlib.contextmanager
def serving(host, port):
    server = ThreadingTCPServer((host, port), BaseRequestHandler)
    t = threading.Thread(target=server.serve_forever)
    t.start()
    try:
        yield server
    finally:
        t.join()


with contextlib.ExitStack() as stack:
    stack.enter_context(serving("0.0.0.0", 8113))
    if extra := os.environ.get("EXTRA"):
        stack.enter_context(serving("127.0.0.1", int(extra)))
`, ` => any 8113
EXTRA=8114 => any 8113 & loopback 8114`},
	{"python json schema like settings with recursion", `-- Procfile --
web: python app.py
-- defaults.json --
{"http": {"host": "0.0.0.0", "port": 8115, "tls": {"on": false}}}
-- app.py --
import json
import os
import pathlib
from http.server import HTTPServer, BaseHTTPRequestHandler


def override(node, path=("CFG",)):
    out = {}
    for key, value in node.items():
        here = (*path, key.upper())
        if isinstance(value, dict):
            out[key] = override(value, here)
        else:
            raw = os.environ.get("__".join(here))
            out[key] = type(value)(raw) if raw is not None else value
    return out


cfg = override(json.loads(pathlib.Path(__file__).with_name("defaults.json").read_text()))
http = cfg["http"]
HTTPServer((http["host"], http["port"]), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8115
CFG__HTTP__PORT=6912 => any 6912`},
	{"python waitress with a class based app and getopt", `-- Procfile --
web: python serve.py -p 8116 -l
-- serve.py --
import getopt
import os
import sys
from waitress import serve


class App:
    def __call__(self, environ, start_response):
        start_response("200 OK", [])
        return [b""]


opts, rest = getopt.getopt(sys.argv[1:], "p:l", ["port=", "local"])
options = dict(opts)
port = os.environ.get("PORT") or options.get("-p") or options.get("--port", "8117")
host = "127.0.0.1" if "-l" in options else "0.0.0.0"
serve(App(), host=host, port=port, _quiet=True)
-- requirements.txt --
waitress
`, ` => loopback 8116
PORT=6913 => loopback 6913`},
	{"ruby plugin registry with inherited hook", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
class Server
  @registry = {}
  class << self
    attr_reader :registry
    def inherited(sub)
      super
      Server.registry[sub.name.downcase.to_sym] = sub
    end
  end

  def port = 8118
  def run = Socket.tcp_server_loop(host, port) { |c, _| c.close }
end
class Private < Server
  def host = '127.0.0.1'
end
class Public < Server
  def host = '0.0.0.0'
  def port = super + 1
end
Server.registry.fetch((ENV['SERVER'] || 'private').to_sym).new.run
`, ` => loopback 8118
SERVER=public => any 8119`},
	{"ruby yaml with defaults and deep merge", `-- Procfile --
web: ruby app.rb
-- settings.yml --
default: &default
  server:
    host: 127.0.0.1
    port: 8120
production:
  <<: *default
  server:
    host: 0.0.0.0
-- app.rb --
require 'yaml'
require 'webrick'
def deep_merge(a, b)
  a.merge(b) { |_, x, y| x.is_a?(Hash) && y.is_a?(Hash) ? deep_merge(x, y) : y }
end
all = YAML.load_file('settings.yml', aliases: true)
settings = deep_merge(all['default'], all[ENV['RACK_ENV'].to_s] || {})
server = settings['server']
WEBrick::HTTPServer.new(Port: server['port'], BindAddress: server['host'], AccessLog: []).start
`, ` => loopback 8120
RACK_ENV=production => any 8120`},
	{"ruby starts puma by its cli class", `-- Procfile --
web: ruby start.rb
-- start.rb --
port = ENV.fetch('PORT', '8121')
exec('puma', '--bind', "tcp://0.0.0.0:#{port}", '--threads', '1:2', 'config.ru')
-- config.ru --
run ->(e) { [200, {}, []] }
`, ` => any 8121
PORT=6916 => any 6916`},
	{"php middleware pipeline and invokable", `-- Procfile --
web: php app.php
-- app.php --
<?php
class Pipeline
{
    private array $stages = [];
    public function pipe(callable ...$stages): static
    {
        array_push($this->stages, ...$stages);
        return $this;
    }
    public function __invoke(mixed $input): mixed
    {
        return array_reduce($this->stages, fn ($carry, $stage) => $stage($carry), $input);
    }
}
$port = (new Pipeline())
    ->pipe('trim', fn (string $p) => $p === '' ? '8122' : $p)
    ->pipe(intval(...), function (int $p) {
        if ($p < 1024) throw new OutOfRangeException("port $p");
        return $p;
    })((string) getenv('PORT'));
$server = stream_socket_server("tcp://127.0.0.1:$port");
while (true) stream_socket_accept($server, -1);
`, ` => loopback 8122
PORT=6917 => loopback 6917`},
	{"go options with a builder and errors joined", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"strconv"
)

type builder struct {
	host string
	port int
	errs []error
}

func (b *builder) Host(h string) *builder { b.host = h; return b }
func (b *builder) Port(text string) *builder {
	n, err := strconv.ParseUint(text, 10, 16)
	switch {
	case err != nil:
		b.errs = append(b.errs, fmt.Errorf("port %q: %w", text, err))
	case n == 0:
		b.errs = append(b.errs, errors.New("port 0"))
	default:
		b.port = int(n)
	}
	return b
}

func (b *builder) Build() (net.Listener, error) {
	if err := errors.Join(b.errs...); err != nil {
		return nil, err
	}
	return net.Listen("tcp", net.JoinHostPort(b.host, strconv.Itoa(b.port)))
}

func main() {
	port := "8125"
	if v, ok := os.LookupEnv("PORT"); ok {
		port = v
	}
	l, err := (&builder{}).Host("127.0.0.1").Port(port).Build()
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	panic(http.Serve(l, nil))
}
`, ` => loopback 8125
PORT=6919 => loopback 6919
PORT=0 => exits`},
	{"go worker pool that waits and then serves", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"sync"
)

func warm(n int) int {
	var wg sync.WaitGroup
	var mu sync.Mutex
	total := 0
	jobs := make(chan int, n)
	for i := 0; i < n; i++ {
		jobs <- i
	}
	close(jobs)
	for w := 0; w < 3; w++ {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for j := range jobs {
				mu.Lock()
				total += j
				mu.Unlock()
			}
		}()
	}
	wg.Wait()
	return total
}

func main() {
	log.Println("warm", warm(10))
	port := os.Getenv("PORT")
	if port == "" {
		port = "8126"
	}
	log.Fatal(http.ListenAndServe(":"+port, nil))
}
`, ` => any 8126
PORT=6920 => any 6920`},
	{"rust builder and traits", `-- Procfile --
web: ./target/debug/dome
-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::collections::HashMap;
use std::env;
use std::net::{IpAddr, Ipv4Addr, SocketAddr, TcpListener};

trait Source {
    fn get(&self, key: &str) -> Option<String>;
    fn port(&self, default: u16) -> u16 {
        self.get("PORT").and_then(|p| p.parse().ok()).unwrap_or(default)
    }
}

struct Env<'a>(&'a str);
impl Source for Env<'_> {
    fn get(&self, key: &str) -> Option<String> {
        env::var(format!("{}_{}", self.0, key)).ok()
    }
}

struct Fixed(HashMap<&'static str, String>);
impl Source for Fixed {
    fn get(&self, key: &str) -> Option<String> {
        self.0.get(key).cloned()
    }
}

fn first(sources: &[Box<dyn Source>], key: &str) -> Option<String> {
    sources.iter().find_map(|s| s.get(key))
}

fn main() {
    let sources: Vec<Box<dyn Source>> = vec![Box::new(Env("DOME")), Box::new(Fixed(HashMap::from([("PUBLIC", "0".to_string())])))];
    let ip = match first(&sources, "PUBLIC").as_deref() {
        Some("1") => IpAddr::V4(Ipv4Addr::UNSPECIFIED),
        _ => IpAddr::V4(Ipv4Addr::LOCALHOST),
    };
    let addr = SocketAddr::new(ip, sources[0].port(8131));
    let listener = TcpListener::bind(addr).unwrap();
    for s in listener.incoming().flatten() {
        drop(s);
    }
}
`, ` => loopback 8131
DOME_PORT=6923 DOME_PUBLIC=1 => any 6923`},
	{"express with a router factory and settings module", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"node src/index.js"},"dependencies":{"express":"^5"}}
-- src/settings.js --
const bool = (v, d = false) => (v === undefined ? d : ['1', 'true', 'on'].includes(String(v).toLowerCase()));
module.exports = {
  port: Number.parseInt(process.env.PORT ?? '8001', 10),
  host: bool(process.env.LOCAL_ONLY) ? '127.0.0.1' : '0.0.0.0',
};
-- src/routes.js --
const { Router } = require('express');
module.exports = ({ name }) => Router().get('/', (req, res) => res.json({ name }));
-- src/index.js --
const express = require('express');
const settings = require('./settings');
const app = express().use(express.json()).use('/api', require('./routes')({ name: 'dome' }));
const server = app.listen(settings.port, settings.host);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.close(() => process.exit(0)));
`, ` => any 8001
PORT=6801 => any 6801`},
	{"fastify with plugins in a folder", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"fastify":"^5"}}
-- plugins/health.js --
module.exports = async (app) => { app.get('/health', async () => ({ ok: true })); };
-- app.js --
const path = require('node:path');
const fs = require('node:fs');
const app = require('fastify')();
for (const file of fs.readdirSync(path.join(__dirname, 'plugins'))) {
  if (file.endsWith('.js')) app.register(require(path.join(__dirname, 'plugins', file)));
}
app.listen({ port: process.env.PORT || 8002, host: process.env.HOST || 'localhost' }).catch((e) => { console.error(e); process.exit(1); });
`, ` => loopback 8002
PORT=6802 HOST=0.0.0.0 => any 6802`},
	{"http with an ipv6 choice and reuse", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"a","type":"module"}
-- app.mjs --
import { createServer } from 'node:http';
import { env } from 'node:process';
const options = { port: env.PORT ? Number(env.PORT) : 8003, ...(env.IPV6 ? { host: '::' } : { host: '0.0.0.0' }) };
createServer((_, r) => r.end()).listen(options);
`, ` => any 8003
IPV6=1 PORT=6803 => any 6803`},
	{"koa compose and a port by regex", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"koa":"^3"}}
-- app.js --
const Koa = require('koa');
const { host = '127.0.0.1', port = '8004' } = /^(?:tcp:\/\/)?(?<host>[\w.]+):(?<port>\d+)$/.exec(process.env.ADDRESS ?? '')?.groups ?? {};
new Koa().use((ctx) => { ctx.body = 'k'; }).listen(+port, host);
`, ` => loopback 8004
ADDRESS=tcp://0.0.0.0:6804 => any 6804`},
	{"flask with blueprints and a wsgi file", `-- Procfile --
web: gunicorn --workers 1 --bind ${HOST:-0.0.0.0}:${PORT:-8005} wsgi
-- wsgi.py --
from sky import create_app

application = create_app()
-- sky/__init__.py --
from flask import Flask


def create_app():
    app = Flask(__name__)
    from . import stars
    app.register_blueprint(stars.bp, url_prefix="/stars")
    return app
-- sky/stars.py --
from flask import Blueprint, jsonify

bp = Blueprint("stars", __name__)


@bp.get("/")
def index():
    return jsonify([])
-- requirements.txt --
flask
gunicorn
`, ` => any 8005
PORT=6805 HOST=127.0.0.1 => loopback 6805`},
	{"uvicorn from a typed settings dataclass", `-- Procfile --
web: python -m sky.main
-- sky/__init__.py --
-- sky/settings.py --
import os
from dataclasses import dataclass, fields


@dataclass(frozen=True, slots=True)
class Settings:
    host: str = "0.0.0.0"
    port: int = 8006

    def __post_init__(self):
        if self.port < 0:
            raise ValueError("port")

    @classmethod
    def from_env(cls, prefix="SKY_"):
        given = {}
        for f in fields(cls):
            raw = os.environ.get(prefix + f.name.upper())
            if raw is not None:
                given[f.name] = int(raw) if f.type in (int, "int") else raw
        return cls(**given)
-- sky/main.py --
import uvicorn
from sky.settings import Settings


async def app(scope, receive, send):
    pass


def main():
    s = Settings.from_env()
    uvicorn.run(app, host=s.host, port=s.port, log_level="error")


if __name__ == "__main__":
    main()
-- requirements.txt --
uvicorn
`, ` => any 8006
SKY_PORT=6806 => any 6806
SKY_PORT=-1 => exits`},
	{"tornado with a config module by import", `-- Procfile --
web: python app.py
-- app.py --
import importlib
import os
import asyncio
import tornado.web

settings = importlib.import_module("settings_" + os.environ.get("TORNADO_SETTINGS", "dev"))


async def main():
    tornado.web.Application([]).listen(settings.PORT, address=settings.ADDRESS)
    await asyncio.Event().wait()

asyncio.run(main())
-- settings_dev.py --
PORT, ADDRESS = 8007, "127.0.0.1"
-- settings_live.py --
from settings_dev import *  # noqa
ADDRESS = ""
PORT += 1
-- requirements.txt --
tornado
`, ` => loopback 8007
TORNADO_SETTINGS=live => any 8008`},
	{"http.server with a handler partial", `-- Procfile --
web: python serve.py --directory public
-- public/index.html --
x
-- serve.py --
import argparse
import functools
import os
from http.server import ThreadingHTTPServer, SimpleHTTPRequestHandler

parser = argparse.ArgumentParser()
parser.add_argument("--directory", "-d", default=os.getcwd())
parser.add_argument("port", type=int, nargs="?", default=os.environ.get("PORT", 8009))
args = parser.parse_args()
handler = functools.partial(SimpleHTTPRequestHandler, directory=args.directory)
ThreadingHTTPServer(("0.0.0.0", int(args.port)), handler).serve_forever()
`, ` => any 8009
PORT=6808 => any 6808`},
	{"sinatra modular with helpers and env", `-- Procfile --
web: bundle exec rackup -p ${PORT:-8010} -o 0.0.0.0 -s puma
-- Gemfile --
source 'https://rubygems.org'
gem 'sinatra'
gem 'puma'
-- app/base.rb --
require 'sinatra/base'
class Base < Sinatra::Base
  helpers do
    def json(o) = o.to_s
  end
end
-- app/stars.rb --
require_relative 'base'
class Stars < Base
  get('/') { json [] }
end
-- config.ru --
require_relative 'app/stars'
map('/stars') { run Stars }
`, ` => any 8010
PORT=6810 => any 6810`},
	{"puma with a config of its own by env", `-- Procfile --
web: bundle exec puma
-- Gemfile --
source 'https://rubygems.org'
gem 'puma'
-- config.ru --
run ->(e) { [200, {}, []] }
-- config/puma.rb --
threads_count = ENV.fetch('WEB_THREADS', 2)
threads threads_count, threads_count
preload_app! if ENV['PRELOAD']
port        ENV['PORT'] || 8011
environment ENV['RACK_ENV'] || 'development'
`, ` => any 8011
PORT=6811 WEB_THREADS=3 => any 6811`},
	{"ruby server object with a config hash and each", `-- Procfile --
web: ruby server.rb
-- server.rb --
require 'socket'
class Config
  DEFAULTS = { host: '0.0.0.0', port: 8012 }.freeze
  DEFAULTS.each do |name, default|
    define_method(name) do
      raw = ENV["DOME_#{name.upcase}"]
      next default if raw.nil?

      default.is_a?(Integer) ? Integer(raw) : raw
    end
  end
end
config = Config.new
Socket.tcp_server_loop(config.host, config.port) { |s, _| s.close }
`, ` => any 8012
DOME_PORT=6812 => any 6812`},
	{"php front controller and constants", `-- Procfile --
web: php -S ${BIND:-0.0.0.0}:${PORT:-8013} -t public
-- public/index.php --
<?php
const NAME = 'dome';
echo NAME;
`, ` => any 8013
PORT=6813 BIND=localhost => loopback 6813`},
	{"php server with a readonly config and match", `-- Procfile --
web: php bin/serve
-- bin/serve --
#!/usr/bin/env php
<?php
require dirname(__DIR__) . '/src/Config.php';
$config = Config::for(getenv('APP_ENV') ?: 'live');
$s = stream_socket_server($config->address(), $errno, $errstr) ?: exit("$errstr\n");
while (true) { if ($c = stream_socket_accept($s, -1)) fclose($c); }
-- src/Config.php --
<?php
final class Config
{
    private function __construct(public readonly string $host, public readonly int $port) {}

    public static function for(string $env): self
    {
        return match ($env) {
            'live' => new self('0.0.0.0', 8014),
            'local', 'dev' => new self('127.0.0.1', 8015),
            default => throw new DomainException("no environment $env"),
        };
    }

    public function address(): string { return "tcp://{$this->host}:{$this->port}"; }
}
`, ` => any 8014
APP_ENV=local => loopback 8015
APP_ENV=test => exits`},
	{"go with env package and handler struct", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"log/slog"
	"net/http"
	"os"
)

type app struct{ log *slog.Logger }

func (a app) ServeHTTP(w http.ResponseWriter, r *http.Request) { a.log.Info("hit"); w.WriteHeader(204) }

func getenv(name, fallback string) string {
	v, ok := os.LookupEnv(name)
	if !ok || v == "" {
		return fallback
	}
	return v
}

func main() {
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelWarn}))
	addr := getenv("LISTEN_ADDR", ":8016")
	if err := http.ListenAndServe(addr, app{log}); err != nil {
		log.Error("serve", "err", err)
		os.Exit(1)
	}
}
`, ` => any 8016
LISTEN_ADDR=127.0.0.1:6814 => loopback 6814
LISTEN_ADDR=6814 => exits`},
	{"java with a config interface and system properties", `-- Procfile --
web: java -Dgate.host=0.0.0.0 -cp out gate.Gate
-- src/gate/Gate.java --
package gate;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.List;

public class Gate {
    public static void main(String[] args) throws Exception {
        Sources sources = new Sources(List.of(new EnvSource(), new PropertySource(), k -> k.equals("port") ? "8018" : null));
        HttpServer server = HttpServer.create(new InetSocketAddress(sources.get("host"), Integer.parseInt(sources.get("port"))), 0);
        server.createContext("/").setHandler(x -> { x.sendResponseHeaders(204, -1); x.close(); });
        server.start();
    }
}
-- src/gate/Source.java --
package gate;

@FunctionalInterface
interface Source {
    String find(String key);
}
-- src/gate/EnvSource.java --
package gate;

class EnvSource implements Source {
    @Override public String find(String key) { return System.getenv("GATE_" + key.toUpperCase()); }
}
-- src/gate/PropertySource.java --
package gate;

class PropertySource implements Source {
    @Override public String find(String key) { return System.getProperty("gate." + key); }
}
-- src/gate/Sources.java --
package gate;

import java.util.List;
import java.util.NoSuchElementException;
import java.util.Objects;

record Sources(List<Source> all) {
    String get(String key) {
        return all.stream().map(s -> s.find(key)).filter(Objects::nonNull).findFirst()
            .orElseThrow(() -> new NoSuchElementException(key));
    }
}
`, ` => any 8018
GATE_PORT=6816 => any 6816`},
	{"deno with a config file read", `-- Procfile --
web: deno run --allow-net --allow-read --allow-env main.ts
-- deno.json --
{}
-- config.json --
{"dev":{"port":8019,"hostname":"127.0.0.1"},"live":{"port":8020,"hostname":"0.0.0.0"}}
-- main.ts --
interface Config { port: number; hostname: string }
const all: Record<string, Config> = JSON.parse(await Deno.readTextFile(new URL("./config.json", import.meta.url)));
const config = all[Deno.env.get("STAGE") ?? "dev"];
Deno.serve(config, () => new Response("x"));
`, ` => loopback 8019
STAGE=live => any 8020`},
	{"bun with hono and an export", `-- Procfile --
web: bun run src/index.ts
-- package.json --
{"name":"a","type":"module","dependencies":{"hono":"^4"}}
-- src/index.ts --
import { Hono } from 'hono';
const app = new Hono();
app.get('/', (c) => c.text('x'));
export default { port: Number(process.env.PORT ?? 8021), hostname: '0.0.0.0', fetch: app.fetch };
`, ` => any 8021
PORT=6820 => any 6820`},
	{"start script with traps and defaults", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/usr/bin/env bash
set -Eeuo pipefail
trap 'echo "failed at line $LINENO" >&2' ERR
readonly PORT="${PORT:-8022}"
readonly WORKERS="${WORKERS:-1}"
declare -a args=(--bind "0.0.0.0:${PORT}" --workers "${WORKERS}")
[[ "${LOG_LEVEL:-}" ]] && args+=(--log-level "${LOG_LEVEL}")
exec gunicorn "${args[@]}" app:app
-- app.py --
def app(e, s):
    s("200 OK", [])
    return [b""]
-- requirements.txt --
gunicorn
`, ` => any 8022
PORT=6821 WORKERS=2 => any 6821`},
}

func TestLatelySeen(t *testing.T) {
	t.Parallel()
	for _, c := range latelySeen {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
