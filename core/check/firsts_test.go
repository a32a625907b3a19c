package check_test

import "testing"

// firstPrograms are ordinary programs as a reader of the servers would write them: what each did
// in the environments beside it was read from the kernel.
var firstPrograms = []struct{ name, tree, want string }{
	{"express with layered settings object and freeze", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"gate","dependencies":{"express":"4"}}
-- src/settings/base.js --
module.exports = {
  http: { port: 12951, host: undefined, trustProxy: false },
  log: { level: 'debug' },
};
-- src/settings/production.js --
const base = require('./base');
module.exports = { ...base, http: { ...base.http, port: Number(process.env.PORT ?? 12952), host: '0.0.0.0', trustProxy: 1 }, log: { level: 'warn' } };
-- src/settings/index.js --
const env = process.env.NODE_ENV || 'base';
let chosen;
try {
  chosen = require(` + "`" + `./${env}` + "`" + `);
} catch (err) {
  if (err.code !== 'MODULE_NOT_FOUND') throw err;
  chosen = require('./base');
}
if (process.env.BIND_HOST) chosen.http.host = process.env.BIND_HOST;
module.exports = Object.freeze(chosen);
-- src/index.js --
const express = require('express');
const { http, log } = require('./settings');
const app = express();
if (http.trustProxy) app.set('trust proxy', http.trustProxy);
app.get('/healthz', (_req, res) => res.json({ level: log.level }));
const args = [http.port, http.host].filter((x) => x !== undefined);
app.listen(...args, function () { console.log('on', this.address()); });
`, ` => any 12951
NODE_ENV=production => any 12952
NODE_ENV=production PORT=12301 BIND_HOST=127.0.0.1 => loopback 12301`},
	{"http server class with private fields and static factory", `-- Procfile --
web: node server.mjs --listen=:12302
-- package.json --
{"name":"gate","type":"module"}
-- server.mjs --
import { createServer } from 'node:http';
import { parseArgs } from 'node:util';

class Gate {
  #host; #port; #server;
  static from(text) {
    const at = text.lastIndexOf(':');
    const host = text.slice(0, at) || '127.0.0.1';
    const port = Number.parseInt(text.slice(at + 1), 10);
    if (!Number.isInteger(port)) throw new TypeError(` + "`" + `bad address: ${text}` + "`" + `);
    return new Gate(host, port);
  }
  constructor(host, port) {
    this.#host = host;
    this.#port = port;
    this.#server = createServer((req, res) => this.#answer(req, res));
  }
  #answer(req, res) { res.end(req.url); }
  get url() { return ` + "`" + `http://${this.#host}:${this.#port}` + "`" + `; }
  open() {
    return new Promise((ok, no) => {
      this.#server.once('error', no);
      this.#server.listen({ host: this.#host, port: this.#port, backlog: 64 }, () => ok(this));
    });
  }
}
const { values } = parseArgs({ options: { listen: { type: 'string', short: 'l', default: process.env.LISTEN } } });
const gate = await Gate.from(process.env.LISTEN ?? values.listen).open();
console.log(gate.url);
`, ` => loopback 12302
LISTEN=0.0.0.0:12303 => any 12303`},
	{"fastify plugin decorating config", `-- Procfile --
web: node app.js
-- package.json --
{"name":"gate","dependencies":{"fastify":"4","fastify-plugin":"4"}}
-- plugins/config.js --
const fp = require('fastify-plugin');
module.exports = fp(async function config(fastify, opts) {
  const read = (name, parse = String, fallback) => {
    const raw = process.env[` + "`" + `${opts.prefix}${name}` + "`" + `];
    return raw === undefined ? fallback : parse(raw);
  };
  fastify.decorate('config', { port: read('PORT', Number, 12954), host: read('HOST', undefined, 'localhost') });
}, { name: 'config' });
-- app.js --
const build = require('fastify');
async function main() {
  const app = build({ logger: false });
  await app.register(require('./plugins/config'), { prefix: 'GATE_' });
  app.get('/', async () => 'ok');
  await app.ready();
  const { port, host } = app.config;
  await app.listen({ port, host: host === 'localhost' ? '127.0.0.1' : host });
}
main().catch((e) => { console.error(e); process.exitCode = 1; });
`, ` => loopback 12954
GATE_PORT=12304 => loopback 12304
GATE_PORT=12304 GATE_HOST=0.0.0.0 => any 12304`},
	{"koa with config from yaml like ini text", `-- Procfile --
web: node main.js
-- package.json --
{"name":"gate","dependencies":{"koa":"2"}}
-- gate.ini --
; settings
[server]
port = 12955
host = 0.0.0.0
[catalogue]
limit=10
-- main.js --
const Koa = require('koa');
const { readFileSync } = require('fs');
const { resolve } = require('path');

function parse(text) {
  const out = {};
  let section = out;
  for (const raw of text.split(/\r?\n/)) {
    const line = raw.trim();
    if (!line || line.startsWith(';')) continue;
    const head = /^\[(.+)\]$/.exec(line);
    if (head) { section = out[head[1]] ??= {}; continue; }
    const eq = line.indexOf('=');
    section[line.slice(0, eq).trim()] = line.slice(eq + 1).trim();
  }
  return out;
}
const ini = parse(readFileSync(resolve(__dirname, 'gate.ini'), 'utf-8'));
const app = new Koa();
app.use(async (ctx) => { ctx.body = ini.catalogue.limit; });
app.listen(+(process.env.PORT || ini.server.port), ini.server.host);
`, ` => any 12955
PORT=12305 => any 12305`},
	{"cluster with port per worker id", `-- Procfile --
web: node cluster.js
-- package.json --
{"name":"gate"}
-- cluster.js --
const cluster = require('cluster');
const http = require('http');
const wanted = parseInt(process.env.CONCURRENCY, 10) || 1;
if (cluster.isPrimary) {
  for (let i = 0; i < wanted; i++) cluster.fork({ GATE_INDEX: i });
  cluster.on('exit', (w) => console.log('gone', w.id));
} else {
  const port = 12306 + Number(process.env.GATE_INDEX);
  http.createServer((q, r) => r.end('w')).listen(port);
}
`, ` => any 12306
CONCURRENCY=2 => any 12306 & any 12307`},
	{"socket.io on http with cors env list", `-- Procfile --
web: node io.js
-- package.json --
{"name":"gate","dependencies":{"socket.io":"4"}}
-- io.js --
const { createServer } = require('node:http');
const { Server } = require('socket.io');
const origins = (process.env.ORIGINS || '').split(',').filter(Boolean);
const http = createServer();
const io = new Server(http, { cors: { origin: origins.length ? origins : '*' } });
io.on('connection', (s) => s.emit('hello'));
const { PORT = origins.length > 1 ? 12958 : 12959 } = process.env;
http.listen(PORT, () => console.log('up'));
`, ` => any 12959
PORT=12308 ORIGINS=a,b => any 12308`},
	{"hono node server with zod env", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"gate","type":"module","dependencies":{"hono":"4","@hono/node-server":"1","zod":"3"}}
-- env.mjs --
import { z } from 'zod';
const schema = z.object({
  PORT: z.coerce.number().int().min(1).max(65535).default(12960),
  HOSTNAME_: z.string().min(1).optional(),
  NODE_ENV: z.enum(['development', 'production', 'test']).default('development'),
});
const parsed = schema.safeParse(process.env);
if (!parsed.success) {
  console.error(parsed.error.flatten().fieldErrors);
  process.exit(1);
}
export const env = parsed.data;
-- index.mjs --
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { env } from './env.mjs';
const app = new Hono().get('/', (c) => c.text(env.NODE_ENV));
serve({ fetch: app.fetch, port: env.PORT, hostname: env.HOSTNAME_ ?? '0.0.0.0' }, (info) => console.log(info.port));
`, ` => any 12960
PORT=12309 => any 12309
PORT=0.5 => exits`},
	{"ws with server from generator of config", `-- Procfile --
web: node ws.js
-- package.json --
{"name":"gate","dependencies":{"ws":"8"}}
-- ws.js --
const { WebSocketServer } = require('ws');
function* candidates() {
  yield process.env.WS_PORT;
  yield process.env.PORT;
  yield '12961';
}
let chosen;
for (const c of candidates()) {
  const n = Number(c);
  if (c && Number.isSafeInteger(n) && n > 0) { chosen = n; break; }
}
const wss = new WebSocketServer({ port: chosen, host: '127.0.0.1', clientTracking: true });
wss.on('listening', () => console.log('ws', wss.options.port));
`, ` => loopback 12961
WS_PORT=12310 => loopback 12310`},
	{"commander cli with env option", `-- Procfile --
web: node cli.js serve -p 12311
-- package.json --
{"name":"gate","dependencies":{"commander":"*"}}
-- cli.js --
const { Command, Option, InvalidArgumentError } = require('commander');
const http = require('http');
const toPort = (v) => {
  const n = parseInt(v, 10);
  if (Number.isNaN(n)) throw new InvalidArgumentError('not a number');
  return n;
};
const program = new Command('gate').version('1.0.0');
program.command('serve', { isDefault: true })
  .addOption(new Option('-p, --port <port>', 'the port').env('GATE_PORT').default(12962).argParser(toPort))
  .addOption(new Option('-H, --host <host>').env('GATE_HOST').default('127.0.0.1'))
  .action(async ({ port, host }) => {
    const server = http.createServer((q, r) => r.end());
    await new Promise((r) => server.listen(port, host, r));
    console.log(server.address());
  });
program.command('list').action(() => console.log('none'));
program.parseAsync(process.argv);
`, ` => loopback 12311
GATE_HOST=0.0.0.0 => any 12311`},
	{"flask factory with object config and gunicorn", `-- Procfile --
web: gunicorn --bind 0.0.0.0:${PORT:-12961} "gate:create_app()"
-- requirements.txt --
flask
gunicorn
-- gate/__init__.py --
import os
from flask import Flask


def create_app(config=None):
    app = Flask(__name__)
    app.config.from_mapping(SECRET_KEY=os.environ.get("SECRET_KEY", "dev"))
    if config:
        app.config.update(config)

    @app.get("/")
    def index():
        return "ok"

    return app
`, ` => any 12961
PORT=12315 => any 12315`},
	{"uvicorn run with dataclass settings", `-- Procfile --
web: python3 -m gate
-- gate/__init__.py --
-- gate/settings.py --
from __future__ import annotations
import os
from dataclasses import dataclass, field, fields


def env(name: str, default, cast=str):
    raw = os.getenv(f"GATE_HTTP_{name}")
    if raw is None:
        return default
    try:
        return cast(raw)
    except ValueError as e:
        raise SystemExit(f"GATE_HTTP_{name}: {e}") from e


@dataclass(frozen=True)
class HttpSettings:
    host: str = field(default_factory=lambda: env("HOST", "127.0.0.1"))
    port: int = field(default_factory=lambda: env("PORT", 12962, int))

    def as_kwargs(self) -> dict:
        return {f.name: getattr(self, f.name) for f in fields(self)}
-- gate/app.py --
async def app(scope, receive, send):
    assert scope["type"] == "http"
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": b"ok"})
-- gate/__main__.py --
import uvicorn
from .settings import HttpSettings

if __name__ == "__main__":
    uvicorn.run("gate.app:app", lifespan="off", log_level="warning", **HttpSettings().as_kwargs())
`, ` => loopback 12962
GATE_HTTP_PORT=12316 GATE_HTTP_HOST=0.0.0.0 => any 12316
GATE_HTTP_PORT=12316x => exits`},
	{"socketserver threading mixin and argparse", `-- Procfile --
web: python3 serve.py --port 12317
-- serve.py --
import argparse
import os
import socket
import socketserver


class Handler(socketserver.StreamRequestHandler):
    def handle(self):
        self.wfile.write(b"ok\n")


class Server(socketserver.ThreadingMixIn, socketserver.TCPServer):
    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, addr, handler):
        if ":" in addr[0]:
            self.address_family = socket.AF_INET6
        super().__init__(addr, handler)


def main(argv=None):
    p = argparse.ArgumentParser()
    p.add_argument("--host", default=os.environ.get("HOST", "0.0.0.0"))
    p.add_argument("--port", type=int, default=12963)
    a = p.parse_args(argv)
    with Server((a.host, a.port), Handler) as s:
        s.serve_forever(poll_interval=0.1)


if __name__ == "__main__":
    main()
`, ` => any 12317
HOST=::1 => loopback 12317`},
	{"aiohttp with configparser interpolation", `-- Procfile --
web: python3 web.py
-- gate.cfg --
[DEFAULT]
base = 12318
host = 127.0.0.1
[private]
port = %(base)s
[public]
host = 0.0.0.0
port = 12319
-- web.py --
import configparser
import os
from pathlib import Path
from aiohttp import web

cfg = configparser.ConfigParser()
cfg.read(Path(__file__).with_name("gate.cfg"))
section = cfg[os.environ.get("GATE_SECTION", "private")]


async def index(request):
    return web.Response(text="ok")


app = web.Application()
app.add_routes([web.get("/", index)])
web.run_app(app, host=section["host"], port=section.getint("port"), print=None)
`, ` => loopback 12318
GATE_SECTION=public => any 12319`},
	{"tornado with options and env default", `-- Procfile --
web: python3 t.py --port=12320
-- t.py --
import os
import tornado.ioloop
import tornado.web
from tornado.options import define, options, parse_command_line

define("port", default=12964, type=int, help="the port")
define("address", default=os.environ.get("ADDRESS", ""), help="the interface")


class Main(tornado.web.RequestHandler):
    def get(self):
        self.write("ok")


if __name__ == "__main__":
    parse_command_line()
    app = tornado.web.Application([(r"/", Main)])
    app.listen(options.port, options.address)
    tornado.ioloop.IOLoop.current().start()
`, ` => any 12320
ADDRESS=127.0.0.1 => loopback 12320`},
	{"waitress through a launcher with match", `-- Procfile --
web: python3 run.py
-- run.py --
import os
import sys
from waitress import serve


def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"ok"]


def listen():
    match os.environ.get("MODE", "local"), os.environ.get("PORT"):
        case "local", None:
            return "127.0.0.1:12965"
        case "local", port:
            return f"127.0.0.1:{port}"
        case "live" | "prod", str(port) if port.isdigit():
            return f"*:{port}"
        case mode, _:
            sys.exit(f"no mode {mode}")


serve(app, listen=listen(), threads=2)
`, ` => loopback 12965
MODE=live PORT=12321 => any 12321
MODE=odd => exits`},
	{"django settings from environ runserver", `-- Procfile --
web: python3 manage.py runserver 0.0.0.0:$PORT --noreload
-- manage.py --
import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "site_.settings")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)
-- site_/__init__.py --
-- site_/settings.py --
import os
SECRET_KEY = os.environ.get("SECRET_KEY", "dev-only")
DEBUG = True
ALLOWED_HOSTS = ["*"]
ROOT_URLCONF = "site_.urls"
INSTALLED_APPS = []
MIDDLEWARE = []
-- site_/urls.py --
urlpatterns = []
`, `PORT=12322 => any 12322`},
	{"asyncio protocol with signal handling and unix option", `-- Procfile --
web: python3 echo.py
-- echo.py --
import asyncio
import contextlib
import os
import signal


async def handle(reader, writer):
    writer.write(await reader.read(100))
    writer.close()


async def main():
    loop = asyncio.get_running_loop()
    stop = loop.create_future()
    for s in (signal.SIGINT, signal.SIGTERM):
        loop.add_signal_handler(s, stop.set_result, None)
    async with contextlib.AsyncExitStack() as stack:
        path = os.environ.get("GATE_SOCKET")
        if path:
            server = await asyncio.start_unix_server(handle, path)
        else:
            server = await asyncio.start_server(handle, "127.0.0.1", int(os.environ.get("GATE_PORT", 12966)))
        await stack.enter_async_context(server)
        await stop


asyncio.run(main())
`, ` => loopback 12966
GATE_SOCKET=gate.sock => unix:gate.sock
GATE_PORT=12323 => loopback 12323`},
	{"sinatra modular with configure blocks", `-- Procfile --
web: ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "webrick"
-- app.rb --
require 'sinatra/base'

class Gate < Sinatra::Base
  set :server, :webrick
  configure :development do
    set :bind, '127.0.0.1'
    set :port, 12967
  end
  configure :production do
    set :bind, '0.0.0.0'
    set :port, ENV.fetch('PORT').to_i
  end
  get('/') { 'ok' }
  run! if app_file == $0
end
`, ` => loopback 12967
RACK_ENV=production PORT=12324 => any 12324`},
	{"puma config with blocks of environment", `-- Procfile --
web: puma -C config/puma.rb
-- config.ru --
run ->(env) { [200, {}, ['ok']] }
-- config/puma.rb --
threads 1, 1
rails_env = ENV.fetch('RACK_ENV') { 'development' }
environment rails_env
if (given = ENV['PUMA_BIND'])
  bind given
else
  port(rails_env == 'production' ? 12325 : 12968)
end
`, ` => any 12968
RACK_ENV=production => any 12325
PUMA_BIND=tcp://127.0.0.1:12326 => loopback 12326`},
	{"webrick with optparse and yaml", `-- Procfile --
web: ruby serve.rb -c gate.yml
-- gate.yml --
default: &default
  host: 0.0.0.0
  port: 12969
production:
  <<: *default
  host: 127.0.0.1
-- serve.rb --
require 'optparse'
require 'webrick'
require 'yaml'

options = { config: nil, env: ENV['GATE_ENV'] || 'production' }
OptionParser.new do |o|
  o.on('-c', '--config FILE', String) { |f| options[:config] = f }
  o.on('-e', '--env NAME') { |e| options[:env] = e }
end.parse!

conf = YAML.load_file(options[:config], aliases: true).fetch(options[:env])
port = Integer(ENV.fetch('GATE_PORT', conf['port']))
server = WEBrick::HTTPServer.new(BindAddress: conf['host'], Port: port, AccessLog: [], Logger: WEBrick::Log.new(File::NULL))
server.mount_proc('/') { |_, res| res.body = 'ok' }
trap('TERM') { server.shutdown }
server.start
`, ` => loopback 12969
GATE_PORT=12327 => loopback 12327`},
	{"tcpserver with struct and forwardable", `-- Procfile --
web: ruby lib/gate.rb
-- lib/gate.rb --
require 'socket'
require 'forwardable'

Address = Struct.new(:host, :port) do
  def self.parse(text)
    m = text.match(/\A(?<host>\[[^\]]+\]|[^:]*):(?<port>\d+)\z/) or raise ArgumentError, "bad address #{text}"
    new(m[:host].delete('[]'), Integer(m[:port], 10))
  end
  def to_a = [host.empty? ? nil : host, port].compact
end

class Gate
  extend Forwardable
  def_delegators :@server, :accept, :addr
  def initialize(address) = @server = TCPServer.new(*address.to_a)
  def run
    loop { Thread.new(accept) { |c| c.puts 'ok'; c.close } }
  end
end

Gate.new(Address.parse(ENV['LISTEN_ON'] || '127.0.0.1:12970')).run
`, ` => loopback 12970
LISTEN_ON=[::]:12328 => any 12328`},
	{"chi with envconfig like struct tags by hand", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.22
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
	"reflect"
	"strconv"
)

type config struct {
	Host  string ` + "`" + `env:"GATE_HOST" default:"0.0.0.0"` + "`" + `
	Port  int    ` + "`" + `env:"GATE_PORT" default:"12971"` + "`" + `
	Debug bool   ` + "`" + `env:"GATE_DEBUG"` + "`" + `
}

func load(into any) error {
	v := reflect.ValueOf(into).Elem()
	t := v.Type()
	for i := 0; i < t.NumField(); i++ {
		f := t.Field(i)
		raw, ok := os.LookupEnv(f.Tag.Get("env"))
		if !ok {
			raw = f.Tag.Get("default")
		}
		if raw == "" {
			continue
		}
		switch f.Type.Kind() {
		case reflect.String:
			v.Field(i).SetString(raw)
		case reflect.Int:
			n, err := strconv.Atoi(raw)
			if err != nil {
				return fmt.Errorf("%s: %w", f.Name, err)
			}
			v.Field(i).SetInt(int64(n))
		case reflect.Bool:
			b, err := strconv.ParseBool(raw)
			if err != nil {
				return err
			}
			v.Field(i).SetBool(b)
		}
	}
	return nil
}

func main() {
	var c config
	if err := load(&c); err != nil {
		log.Fatal(err)
	}
	host := c.Host
	if c.Debug {
		host = "127.0.0.1"
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", host, c.Port), nil))
}
`, ` => any 12971
GATE_PORT=12329 => any 12329
GATE_PORT=12329 GATE_DEBUG=true => loopback 12329`},
	{"flagset subcommand and json config", `-- Procfile --
web: ./gate serve -config conf.json
-- go.mod --
module gate

go 1.22
-- conf.json --
{"addr": "127.0.0.1:12972", "timeouts": {"read": "5s"}}
-- main.go --
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"net/http"
	"os"
	"time"
)

type duration struct{ time.Duration }

func (d *duration) UnmarshalJSON(b []byte) error {
	var s string
	if err := json.Unmarshal(b, &s); err != nil {
		return err
	}
	v, err := time.ParseDuration(s)
	d.Duration = v
	return err
}

type conf struct {
	Addr     string ` + "`" + `json:"addr"` + "`" + `
	Timeouts struct {
		Read duration ` + "`" + `json:"read"` + "`" + `
	} ` + "`" + `json:"timeouts"` + "`" + `
}

func serve(args []string) error {
	fs := flag.NewFlagSet("serve", flag.ContinueOnError)
	file := fs.String("config", "", "the settings")
	if err := fs.Parse(args); err != nil {
		return err
	}
	var c conf
	if *file != "" {
		data, err := os.ReadFile(*file)
		if err != nil {
			return err
		}
		if err := json.Unmarshal(data, &c); err != nil {
			return err
		}
	}
	if a := os.Getenv("GATE_ADDR"); a != "" {
		c.Addr = a
	}
	s := &http.Server{Addr: c.Addr, ReadTimeout: c.Timeouts.Read.Duration}
	return s.ListenAndServe()
}

var commands = map[string]func([]string) error{"serve": serve}

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: gate serve")
		os.Exit(2)
	}
	run, ok := commands[os.Args[1]]
	if !ok {
		os.Exit(2)
	}
	if err := run(os.Args[2:]); err != nil && !errors.Is(err, http.ErrServerClosed) {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
`, ` => loopback 12972
GATE_ADDR=:12330 => any 12330`},
	{"generics options and errgroup like waiters", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.22
-- main.go --
package main

import (
	"context"
	"net"
	"os"
	"os/signal"
	"slices"
	"strings"
	"sync"
)

type Option[T any] func(*T)

type pool struct {
	host  string
	ports []string
}

func with[T any](opts ...Option[T]) *T {
	v := new(T)
	for _, o := range opts {
		o(v)
	}
	return v
}

func host(h string) Option[pool]     { return func(p *pool) { p.host = h } }
func ports(l ...string) Option[pool] { return func(p *pool) { p.ports = append(p.ports, l...) } }

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	given := slices.DeleteFunc(strings.Split(os.Getenv("PORTS"), ","), func(s string) bool { return s == "" })
	if len(given) == 0 {
		given = []string{"12973"}
	}
	p := with(host("127.0.0.1"), ports(given...))
	var wg sync.WaitGroup
	for _, port := range p.ports {
		l, err := net.Listen("tcp", net.JoinHostPort(p.host, port))
		if err != nil {
			panic(err)
		}
		wg.Add(1)
		go func() {
			defer wg.Done()
			for {
				c, err := l.Accept()
				if err != nil {
					return
				}
				c.Close()
			}
		}()
	}
	<-ctx.Done()
	wg.Wait()
}
`, ` => loopback 12973
PORTS=12331,12332 => loopback 12331 & loopback 12332`},
	{"embed and text template address", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.22
-- zones.txt --
east 127.0.0.1 12974
west 0.0.0.0 12333
-- main.go --
package main

import (
	"bufio"
	_ "embed"
	"fmt"
	"log"
	"net/http"
	"os"
	"strings"
)

//go:embed zones.txt
var zones string

type zone struct{ name, host, port string }

func find(name string) (z zone, err error) {
	sc := bufio.NewScanner(strings.NewReader(zones))
	for sc.Scan() {
		f := strings.Fields(sc.Text())
		if len(f) == 3 && f[0] == name {
			return zone{f[0], f[1], f[2]}, nil
		}
	}
	return z, fmt.Errorf("no zone %q", name)
}

func (z zone) String() string { return z.host + ":" + z.port }

func main() {
	name, ok := os.LookupEnv("GATE_ZONE")
	if !ok {
		name = "east"
	}
	z, err := find(name)
	if err != nil {
		log.Fatalln(err)
	}
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{$}", func(w http.ResponseWriter, r *http.Request) { fmt.Fprint(w, z.name) })
	if err := http.ListenAndServe(fmt.Sprint(z), mux); err != nil {
		log.Panic(err)
	}
}
`, ` => loopback 12974
GATE_ZONE=west => any 12333`},
	{"httpserver with sealed config and switch", `-- Procfile --
web: java -cp out gate.Main
-- src/gate/Listen.java --
package gate;

import java.net.InetAddress;
import java.net.InetSocketAddress;

public sealed interface Listen permits Listen.Local, Listen.Any {
    record Local(int port) implements Listen {}
    record Any(int port) implements Listen {}

    static Listen parse(String text) {
        String[] parts = text.split(":", 2);
        int port = parts.length > 1 ? Integer.parseInt(parts[1]) : 12975;
        return switch (parts[0]) {
            case "local" -> new Local(port);
            case "any" -> new Any(port);
            default -> throw new IllegalArgumentException("listen: " + text);
        };
    }

    default InetSocketAddress address() {
        if (this instanceof Local l) {
            return new InetSocketAddress(InetAddress.getLoopbackAddress(), l.port());
        }
        return new InetSocketAddress(((Any) this).port());
    }
}
-- src/gate/Main.java --
package gate;

import com.sun.net.httpserver.HttpServer;
import java.util.Optional;

public class Main {
    public static void main(String... args) throws Exception {
        var listen = Optional.ofNullable(System.getenv("GATE_LISTEN")).map(Listen::parse).orElseGet(() -> new Listen.Any(12976));
        HttpServer server = HttpServer.create(listen.address(), 0);
        server.createContext("/", x -> { x.sendResponseHeaders(204, -1); x.close(); });
        server.start();
    }
}
`, ` => any 12976
GATE_LISTEN=local => loopback 12975
GATE_LISTEN=any:12334 => any 12334`},
	{"serversocket with properties and streams", `-- Procfile --
web: java -cp out gate.Main
-- gate.properties --
gate.host=0.0.0.0
gate.port=12977
-- src/gate/Main.java --
package gate;

import java.io.InputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.Properties;
import java.util.stream.Stream;

public final class Main {
    private static final Properties PROPS = new Properties();

    static String get(String key) {
        return Stream.of(System.getProperty(key), System.getenv(key.toUpperCase().replace('.', '_')), PROPS.getProperty(key))
            .filter(v -> v != null && !v.isBlank())
            .findFirst()
            .orElseThrow(() -> new IllegalStateException(key));
    }

    public static void main(String[] args) throws Exception {
        try (InputStream in = Main.class.getResourceAsStream("/gate.properties")) {
            PROPS.load(in);
        }
        int port = Integer.parseInt(get("gate.port"));
        try (ServerSocket s = new ServerSocket(port, 50, InetAddress.getByName(get("gate.host")))) {
            while (true) {
                s.accept().close();
            }
        }
    }
}
`, ` => any 12977
GATE_PORT=12335 => any 12335`},
	{"php built in with router and ini port", `-- Procfile --
web: php -S 0.0.0.0:${PORT:-12978} -t public router.php
-- router.php --
<?php
if (is_file($_SERVER['DOCUMENT_ROOT'] . $_SERVER['REQUEST_URI'])) { return false; }
echo 'ok';
-- public/index.html --
<p>ok</p>
`, ` => any 12978
PORT=12336 => any 12336`},
	{"php socket server with getopt and env", `-- Procfile --
web: php server.php --host=127.0.0.1
-- server.php --
<?php
declare(strict_types=1);

final class Settings
{
    private function __construct(public readonly string $host, public readonly int $port) {}

    public static function fromGlobals(): self
    {
        $o = getopt('', ['host:', 'port:']);
        $port = $o['port'] ?? getenv('GATE_PORT') ?: '12979';
        return new self($o['host'] ?? '0.0.0.0', (int) $port);
    }

    public function uri(): string { return sprintf('tcp://%s:%d', $this->host, $this->port); }
}

$s = Settings::fromGlobals();
$server = stream_socket_server($s->uri(), $errno, $error) ?: exit("$error\n");
while (true) {
    if ($c = @stream_socket_accept($server, -1)) {
        fwrite($c, "ok\n");
        fclose($c);
    }
}
`, ` => loopback 12979
GATE_PORT=12337 => loopback 12337`},
	{"shell wrapper with defaults and exec", `-- Procfile --
web: ./bin/start
-- bin/start --
#!/bin/sh
set -eu
: "${GATE_ENV:=development}"
case "$GATE_ENV" in
  production) HOST=0.0.0.0; : "${PORT:=12980}" ;;
  *) HOST=127.0.0.1; PORT=${PORT:-12981} ;;
esac
export HOST PORT
cd "$(dirname "$0")/.."
exec python3 -m http.server --bind "$HOST" "$PORT"
`, ` => loopback 12981
GATE_ENV=production => any 12980
GATE_ENV=production PORT=12338 => any 12338`},
	{"deno serve with options file", `-- Procfile --
web: deno run -A main.ts
-- deno.json --
{"tasks":{"start":"deno run -A main.ts"},"imports":{}}
-- lib/options.ts --
export interface Options { port: number; hostname: string }
const given = Deno.env.get("PORT");
export const options: Options = {
  port: given ? Number(given) : 12982,
  hostname: Deno.args.includes("--local") ? "127.0.0.1" : "0.0.0.0",
};
-- main.ts --
import { options } from "./lib/options.ts";
Deno.serve({ ...options, onListen: ({ port }) => console.log(port) }, () => new Response("ok"));
`, ` => any 12982
PORT=12339 => any 12339`},
	{"bun serve with import meta env", `-- Procfile --
web: bun run index.ts
-- package.json --
{"name":"gate","module":"index.ts","type":"module"}
-- index.ts --
const server = Bun.serve({
  fetch: () => new Response("ok"),
  ...(process.env.NODE_ENV === "test" ? { port: 0 } : {}),
});
console.log(server.url.href);
`, ` => any 3000
BUN_PORT=12340 => any 12340
PORT=12341 => any 12341`},
	{"slices and maps", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.23
-- main.go --
package main

import (
	"cmp"
	"log"
	"maps"
	"net"
	"net/http"
	"net/url"
	"os"
	"path"
	"path/filepath"
	"slices"
	"sort"
	"strconv"
	"strings"
	"unicode/utf8"
)

type site struct {
	name string
	port int
}

func main() {
	var sites []site
	for i, p := range strings.Split(os.Getenv("PORTS"), ",") {
		if n, err := strconv.Atoi(p); err == nil {
			sites = slices.Insert(sites, 0, site{"s" + strconv.Itoa(i), n})
		}
	}
	sites = append(sites, site{"last", 12409}, site{"first", 12400})
	sites = slices.DeleteFunc(sites, func(s site) bool { return s.port < 1024 })
	best := slices.MinFunc(sites, func(a, b site) int { return cmp.Compare(a.port, b.port) })
	names := slices.Sorted(maps.Keys(map[string]bool{"b": true, "a": true}))
	i, found := slices.BinarySearch(names, "b")
	at := sort.Search(10, func(n int) bool { return n*n >= 50 })
	m := maps.Collect(slices.All([]string{"x", "y"}))
	maps.DeleteFunc(m, func(k int, v string) bool { return v == "x" })
	port := best.port + i + at + len(m) + utf8.RuneCountInString("é")
	if !found || !slices.IsSorted(names) || path.Dir("/a/b") != "/a" || filepath.Clean("a/../b") != "b" || url.QueryEscape("a b") != "a+b" {
		os.Exit(1)
	}
	host, _ := strconv.Unquote(` + "`" + `"127.0.0.1"` + "`" + `)
	names = slices.Repeat(names, 2)
	if len(names) == 4 && slices.EqualFunc(names[:2], names[2:], func(a, b string) bool { return a == b }) {
		host = "0.0.0.0"
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(host, strconv.Itoa(port)), nil))
}
`, ` => any 12411
PORTS=12402,x,12401 => any 12411
PORTS=9 => any 12411`},
	{"koa with config from json and env overlay", `-- Procfile --
web: node app.js
-- package.json --
{"name":"obs","dependencies":{"koa":"2"}}
-- config.json --
{"server":{"port":12900,"host":"0.0.0.0"},"log":true}
-- lib/config.js --
'use strict';
const fs = require('fs');
const path = require('path');
const raw = JSON.parse(fs.readFileSync(path.join(__dirname, '..', 'config.json'), 'utf8'));
function fromEnv(name, fallback, cast = String) {
  const v = process.env[name];
  return v === undefined || v === '' ? fallback : cast(v);
}
const toPort = (v) => {
  const n = Number(v);
  if (Number.isNaN(n)) {
    console.error(` + "`" + `PORT is not a number: ${v}` + "`" + `);
    process.exit(2);
  }
  return n;
};
module.exports = {
  server: {
    port: fromEnv('PORT', raw.server.port, toPort),
    host: fromEnv('HOST', raw.server.host),
  },
};
-- app.js --
const Koa = require('koa');
const { server: { port, host } } = require('./lib/config');
const app = new Koa();
app.use(async (ctx) => { ctx.body = 'dome'; });
app.listen({ port, host }, () => console.log(` + "`" + `dome on ${host}:${port}` + "`" + `));
`, ` => any 12900
PORT=12001 => any 12001
PORT=abc => exits
HOST=127.0.0.1 PORT=12002 => loopback 12002`},
	{"http server with cluster", `-- Procfile --
web: node cluster.js
-- package.json --
{"name":"obs"}
-- cluster.js --
const cluster = require('cluster');
const http = require('http');
const os = require('os');

const workers = Math.min(Number(process.env.WEB_CONCURRENCY || 1), os.cpus().length);
if (cluster.isPrimary) {
  for (let i = 0; i < workers; i++) cluster.fork({ WORKER_ID: i });
  cluster.on('exit', (worker, code) => {
    if (code !== 0) cluster.fork();
  });
} else {
  const port = process.env.PORT || 12031;
  http.createServer((req, res) => res.end(process.env.WORKER_ID)).listen(port);
}
`, ` => any 12031
WEB_CONCURRENCY=2 PORT=12030 => any 12030`},
	{"php amp-less loop with select", `-- Procfile --
web: php bin/server.php
-- composer.json --
{"require":{"php":">=8.1"},"autoload":{"psr-4":{"Dome\\":"src/"}}}
-- src/Config.php --
<?php
declare(strict_types=1);
namespace Dome;

final class Config
{
    public function __construct(
        public readonly string $scheme,
        public readonly string $host,
        public readonly int $port,
    ) {}

    public static function fromEnv(): self
    {
        $text = getenv('DOME_LISTEN') ?: 'tcp://0.0.0.0:12081';
        $parts = parse_url($text);
        if (!isset($parts['scheme'], $parts['host'], $parts['port'])) {
            throw new \InvalidArgumentException("cannot read DOME_LISTEN: $text");
        }
        return new self(...$parts);
    }

    public function __toString(): string
    {
        return sprintf('%s://%s:%d', $this->scheme, $this->host, $this->port);
    }
}
-- bin/server.php --
<?php
require __DIR__ . '/../src/Config.php';
use Dome\Config;

$config = Config::fromEnv();
$server = stream_socket_server((string) $config, $code, $message) or exit("no: $message\n");
while (true) {
    $read = [$server];
    $w = $e = null;
    if (stream_select($read, $w, $e, 5) === false) break;
    foreach ($read as $r) {
        $c = stream_socket_accept($r, 0);
        fwrite($c, "HTTP/1.0 200 OK\r\n\r\nok");
        fclose($c);
    }
}
`, ` => any 12081
DOME_LISTEN=tcp://127.0.0.1:12080 => loopback 12080
DOME_LISTEN=nonsense => exits`},
	{"puma config ruby with env and on_worker", `-- Procfile --
web: puma -C config/puma.rb
-- Gemfile --
source "https://rubygems.org"
gem "puma"
gem "rack"
-- config.ru --
run ->(env) { [200, { "content-type" => "text/plain" }, ["ok"]] }
-- config/puma.rb --
max = Integer(ENV.fetch("RAILS_MAX_THREADS", 5))
min = ENV.fetch("RAILS_MIN_THREADS") { max }.to_i
threads min, max
environment ENV["RACK_ENV"] || "development"
if ENV["RACK_ENV"] == "production"
  bind "tcp://0.0.0.0:#{ENV.fetch('PORT')}"
else
  port 12101, "127.0.0.1"
end
`, ` => loopback 12101
PORT=12100 RACK_ENV=production => any 12100
RAILS_MAX_THREADS=many => exits`},
	{"tornado with options on the command line", `-- Procfile --
web: python3 main.py --port=12130
-- requirements.txt --
tornado==6.4
-- main.py --
import asyncio
import os

import tornado.web
from tornado.options import define, options, parse_command_line

define("port", default=12131, type=int, help="port")
define("address", default="", help="address")


class Main(tornado.web.RequestHandler):
    def get(self):
        self.write("ok")


async def main():
    parse_command_line()
    if os.environ.get("LISTEN_LOCAL"):
        options.address = "127.0.0.1"
    app = tornado.web.Application([(r"/", Main)])
    app.listen(options.port, address=options.address)
    await asyncio.Event().wait()


if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 12130
LISTEN_LOCAL=1 => loopback 12130`},
	{"socketserver with ini", `-- Procfile --
web: python3 srv.py site.ini
-- requirements.txt --
-- site.ini --
[DEFAULT]
host = 0.0.0.0

[public]
port = 12150

[local]
host = 127.0.0.1
port = %(base)s1
base = 1215
-- srv.py --
import configparser
import http.server
import os
import socketserver
import sys

cp = configparser.ConfigParser()
if not cp.read(sys.argv[1]):
    sys.exit("no such file")
name = os.environ.get("SECTION", "public")
if name not in cp:
    sys.exit(f"no section {name}; there are {', '.join(cp.sections())}")
sec = cp[name]


class Server(socketserver.ThreadingMixIn, http.server.HTTPServer):
    daemon_threads = True
    allow_reuse_address = True


with Server((sec["host"], sec.getint("port")), http.server.SimpleHTTPRequestHandler) as s:
    try:
        s.serve_forever()
    except KeyboardInterrupt:
        pass
`, ` => any 12150
SECTION=local => loopback 12151
SECTION=absent => exits`},
	{"fastify with await and port from package json", `-- Procfile --
web: node .
-- package.json --
{"name":"dome","main":"src/server.js","config":{"port":12160},"dependencies":{"fastify":"4"}}
-- src/server.js --
const fastify = require('fastify')({ logger: false });
const pkg = require('../package.json');
fastify.get('/', async () => ({ ok: true }));
const start = async () => {
  try {
    const port = process.env.npm_package_config_port ?? pkg.config.port;
    const address = await fastify.listen({ port: +port, host: '::' });
    console.log(address);
  } catch (err) {
    fastify.log.error(err);
    process.exit(1);
  }
};
start();
`, ` => any 12160
PORT=0 => any 12160
npm_package_config_port=12161 => any 12161`},
	{"python wsgiref by click", `-- Procfile --
web: python3 -m obs serve --port 12170
-- requirements.txt --
click==8.1.0
-- obs/__init__.py --
-- obs/__main__.py --
from .cli import cli

cli(auto_envvar_prefix="OBS")
-- obs/cli.py --
from wsgiref.simple_server import make_server

import click


@click.group()
@click.option("-v", "--verbose", is_flag=True)
@click.pass_context
def cli(ctx, verbose):
    ctx.obj = {"verbose": verbose}


@cli.command()
@click.option("--host", default="localhost", show_default=True)
@click.option("--port", type=click.IntRange(1, 65535), default=8000)
@click.pass_obj
def serve(obj, host, port):
    def app(environ, start_response):
        start_response("200 OK", [])
        return [b"ok"]

    with make_server(host, port, app) as httpd:
        httpd.serve_forever()
`, ` => loopback 12170
OBS_SERVE_HOST=0.0.0.0 => any 12170`},
	{"go echo of env struct by reflection-free parser", `-- Procfile --
web: ./srv
-- go.mod --
module multi

go 1.21
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
	"strings"
	"sync"
)

func fields(s string) (out []string) {
	for _, f := range strings.Split(s, ",") {
		if f = strings.TrimSpace(f); f != "" {
			out = append(out, f)
		}
	}
	return
}

func main() {
	text, ok := os.LookupEnv("LISTEN")
	if !ok {
		text = "127.0.0.1:12250"
	}
	addrs := fields(text)
	if len(addrs) == 0 {
		log.Fatal("LISTEN names no address")
	}
	var wg sync.WaitGroup
	for _, a := range addrs {
		l, err := net.Listen("tcp", a)
		if err != nil {
			log.Fatal(err)
		}
		wg.Add(1)
		go func(l net.Listener) {
			defer wg.Done()
			log.Print(http.Serve(l, http.NotFoundHandler()))
		}(l)
	}
	wg.Wait()
}
`, ` => loopback 12250
LISTEN=0.0.0.0:12251,127.0.0.1:12252 => any 12251 & loopback 12252
LISTEN=, => exits`},
	{"python asyncio streams with tuple addresses", `-- Procfile --
web: python3 echo.py
-- requirements.txt --
-- echo.py --
import asyncio
import os
import re

ADDRESS = re.compile(r"^(?:\[(?P<six>[0-9a-f:]+)\]|(?P<four>[^:]+)):(?P<port>\d+)$")


async def handle(reader, writer):
    writer.write(await reader.readline())
    await writer.drain()
    writer.close()


async def main():
    text = os.environ.get("ECHO", "0.0.0.0:12270")
    m = ADDRESS.match(text)
    if m is None:
        raise SystemExit(f"ECHO: {text!r} is no address")
    server = await asyncio.start_server(handle, m["six"] or m["four"], int(m["port"]))
    async with server:
        await server.serve_forever()


asyncio.run(main())
`, ` => any 12270
ECHO=[::1]:12271 => loopback 12271
ECHO=127.0.0.1 => exits`},
	{"express with convict-like own schema", `-- Procfile --
web: node server.js
-- package.json --
{"name":"dome","dependencies":{"express":"4","dotenv":"16"}}
-- .env.test --
APP_PORT=12282
-- schema.js --
const schema = {
  env: { env: 'APP_ENV', default: 'development', allowed: ['development', 'test', 'production'] },
  port: { env: 'APP_PORT', default: 12280, parse: (v) => { const n = parseInt(v, 10); if (!(n > 0 && n < 65536)) throw new RangeError('port'); return n; } },
  host: { env: 'APP_HOST', default: '127.0.0.1' },
};
exports.load = function load(env) {
  return Object.fromEntries(Object.entries(schema).map(([key, rule]) => {
    const text = env[rule.env];
    let value = text === undefined ? rule.default : rule.parse ? rule.parse(text) : text;
    if (rule.allowed && !rule.allowed.includes(value)) throw new Error(` + "`" + `${rule.env} must be one of ${rule.allowed}` + "`" + `);
    return [key, value];
  }));
};
-- server.js --
require('dotenv').config({ path: ` + "`" + `.env.${process.env.APP_ENV || 'development'}` + "`" + ` });
const express = require('express');
const conf = require('./schema').load(process.env);
const app = express();
app.get('/', (req, res) => res.send(conf.env));
module.exports = app;
if (require.main === module) app.listen(conf.port, conf.host);
`, ` => loopback 12280
APP_PORT=12281 => loopback 12281
APP_PORT=99999 => exits
APP_ENV=test => loopback 12282`},
	{"settings of gunicorn that end it", `-- Procfile --
web: gunicorn app:app
-- requirements.txt --
gunicorn==20.1.0
-- app.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]
-- gunicorn.conf.py --
import os
bind = "0.0.0.0:" + os.environ.get("PORT", "8100")
workers = int(os.environ.get("WORKERS", "1"))
if workers > 64:
    raise SystemExit("too many")
`, `WORKERS=many => exits
WORKERS=65 => exits
WORKERS=1 PORT=8101 => any 8101`},
	{"settings of puma that look as if they ended it", `-- Procfile --
web: puma -C config/puma.rb
-- Gemfile --
source "https://rubygems.org"
gem "puma"
-- config.ru --
run ->(env) { [200, {}, []] }
-- config/puma.rb --
stage = ENV.fetch("RACK_ENV", "development")
worker_timeout 3600 if stage == "development"
begin
  backlog = Integer(ENV.fetch("BACKLOG"))
rescue KeyError, ArgumentError
  backlog = 1024
end
before_fork do
  raise "not here" unless defined?(Sequel)
end
on_worker_boot { abort "no database" if ENV["DATABASE_URL"].nil? }
lowlevel_error_handler { |e, env| raise e }
on_restart { exit 3 }
threads 1, Integer(ENV["MOST"] || 5)
port ENV.fetch("PORT", 8102)
environment stage
`, ` => any 8102
BACKLOG=x PORT=8103 => any 8103
MOST=x => exits`},
	{"express with port normalization as generators make it", `-- Procfile --
web: node ./bin/www
-- package.json --
{"name":"obs","scripts":{"start":"node ./bin/www"},"dependencies":{"express":"4"}}
-- app.js --
var express = require('express');
var app = express();
app.use('/', function (req, res) { res.send('ok'); });
module.exports = app;
-- bin/www --
#!/usr/bin/env node
var app = require('../app');
var http = require('http');

var port = readPort(process.env.PORT || '12300');
app.set('port', port);
var server = http.createServer(app);
server.listen(port);
server.on('error', failed);
server.on('listening', opened);

function readPort(val) {
  var n = parseInt(val, 10);
  if (isNaN(n)) return val;
  if (n >= 0) return n;
  return false;
}
function failed(error) {
  if (error.syscall !== 'listen') throw error;
  switch (error.code) {
    case 'EACCES': case 'EADDRINUSE':
      console.error('port ' + app.get('port') + ': ' + error.code);
      process.exit(1);
      break;
    default: throw error;
  }
}
function opened() { var a = server.address(); console.log(typeof a === 'string' ? a : a.port); }
`, ` => any 12300
PORT=named.sock => unix:named.sock
PORT=-5 => exits
PORT=12301 => any 12301`},
	{"flask with env file by python-dotenv-free reader and logging", `-- Procfile --
web: python3 wsgi.py
-- requirements.txt --
flask==3.0.0
-- config.py --
import os


class Base:
    PORT = int(os.environ.get("PORT", 12310))
    HOST = "127.0.0.1"
    DEBUG = False


class Production(Base):
    HOST = "0.0.0.0"
-- obs/__init__.py --
import importlib
import os

from flask import Flask


def load(path):
    module, _, name = path.rpartition(".")
    return getattr(importlib.import_module(module), name)


def create_app():
    app = Flask(__name__)
    app.config.from_object(load(os.environ.get("APP_CONFIG", "config.Base")))
    return app
-- wsgi.py --
from obs import create_app

app = create_app()

if __name__ == "__main__":
    app.run(app.config["HOST"], app.config["PORT"], debug=app.config["DEBUG"])
`, ` => loopback 12310
APP_CONFIG=config.Production => any 12310
APP_CONFIG=config.Missing => exits`},
	{"go embed config json with env expansion", `-- Procfile --
web: ./srv
-- go.mod --
module srv

go 1.21
-- config.json --
{"listen": "${SRV_HOST}:${SRV_PORT}", "name": "dome"}
-- main.go --
package main

import (
	_ "embed"
	"encoding/json"
	"log"
	"net/http"
	"os"
)

//go:embed config.json
var raw []byte

type config struct {
	Listen string ` + "`" + `json:"listen"` + "`" + `
	Name   string ` + "`" + `json:"name"` + "`" + `
}

func main() {
	var c config
	if err := json.Unmarshal(raw, &c); err != nil {
		log.Fatal(err)
	}
	c.Listen = os.Expand(c.Listen, func(k string) string {
		if v := os.Getenv(k); v != "" {
			return v
		}
		return map[string]string{"SRV_PORT": "12330"}[k]
	})
	http.HandleFunc("/", func(w http.ResponseWriter, _ *http.Request) { w.Write([]byte(c.Name)) })
	log.Fatal(http.ListenAndServe(c.Listen, nil))
}
`, ` => any 12330
SRV_PORT=12331 => any 12331`},
	{"ruby webrick with struct and case", `-- Procfile --
web: ruby server.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- server.rb --
# frozen_string_literal: true
require "webrick"

Config = Struct.new(:port, :address, keyword_init: true) do
  def self.from(env)
    address = case env.fetch("MODE", "private").to_sym
              when :public then "0.0.0.0"
              when :private then "127.0.0.1"
              else raise ArgumentError, "MODE must be public or private"
              end
    new(port: env.fetch("PORT", "12360").to_i, address: address)
  end
end

c = Config.from(ENV)
s = WEBrick::HTTPServer.new(Port: c.port, BindAddress: c.address, Logger: WEBrick::Log.new(File::NULL), AccessLog: [])
s.mount_proc("/") { |_, res| res.body = "ok" }
%w[INT TERM].each { |sig| trap(sig) { s.shutdown } }
s.start
`, ` => loopback 12360
MODE=public PORT=12361 => any 12361
MODE=other => exits`},
	{"php with composer-less autoload and match", `-- Procfile --
web: php serve.php --port=12370
-- serve.php --
<?php
declare(strict_types=1);

spl_autoload_register(static function (string $class): void {
    require __DIR__ . '/src/' . strtr($class, '\\', '/') . '.php';
});

$options = getopt('', ['port:', 'host::']);
$host = $options['host'] ?? match (getenv('BIND') ?: 'all') {
    'all' => '0.0.0.0',
    'local' => '127.0.0.1',
};
(new Obs\Server($host, (int) ($options['port'] ?? 8080)))->run();
-- src/Obs/Server.php --
<?php
declare(strict_types=1);
namespace Obs;

class Server
{
    private \Socket $socket;

    public function __construct(private string $host, private int $port)
    {
        $this->socket = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
        socket_set_option($this->socket, SOL_SOCKET, SO_REUSEADDR, 1);
    }

    public function run(): never
    {
        if (!socket_bind($this->socket, $this->host, $this->port) || !socket_listen($this->socket, 16)) {
            throw new \RuntimeException(socket_strerror(socket_last_error()));
        }
        for (;;) {
            $c = socket_accept($this->socket);
            socket_write($c, "HTTP/1.0 200 OK\r\n\r\nok");
            socket_close($c);
        }
    }
}
`, ` => any 12370
BIND=local => loopback 12370
BIND=moon => exits`},
	{"hypercorn with toml", `-- Procfile --
web: hypercorn -c hyper.toml app:app
-- requirements.txt --
hypercorn==0.13.2
-- hyper.toml --
bind = ["127.0.0.1:12440", "0.0.0.0:12441"]
workers = 0
-- app.py --
async def app(scope, receive, send):
    pass
`, ` => exits`},
	{"aiohttp cleanup context and web run_app kwargs", `-- Procfile --
web: python3 main.py
-- requirements.txt --
aiohttp==3.9.0
-- main.py --
import os
from aiohttp import web

PREFIX = "AIO_"


def settings():
    found = {k[len(PREFIX):].lower(): v for k, v in os.environ.items() if k.startswith(PREFIX)}
    if "path" in found:
        return {"path": found["path"]}
    return {"host": found.get("host") or None, "port": int(found.get("port", 12450))}


async def store(app):
    app["store"] = {}
    yield
    app["store"].clear()


def make():
    app = web.Application()
    app.cleanup_ctx.append(store)
    return app


if __name__ == "__main__":
    web.run_app(make(), print=None, **settings())
`, ` => any 12450`},
	{"a script of the shell that runs the function that it is told", `-- Procfile --
web: ./entrypoint.sh web
-- requirements.txt --
gunicorn==20.1.0
-- entrypoint.sh --
#!/bin/bash
set -euo pipefail
web() {
  local port="${PORT:-8104}"
  local -a args=(--bind "0.0.0.0:${port}")
  [[ "${RELOAD:-}" == "1" ]] && args+=(--reload)
  exec gunicorn "${args[@]}" app:app
}
local_only() { exec gunicorn -b 127.0.0.1:8105 "$1"; }
role="${ROLE:-${1:-web}}"
case "$role" in
  web|local_only) "$role" app:app ;;
  *) exec gunicorn -b 0.0.0.0:8106 app:app ;;
esac
-- app.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
`, ` => any 8104
PORT=8107 RELOAD=0 => any 8107
ROLE=local_only => loopback 8105
ROLE=other => any 8106`},
	{"a script of the shell that is given the function first", `-- Procfile --
web: ./run serve 8108
-- requirements.txt --
gunicorn==20.1.0
-- run --
#!/bin/sh
serve() { exec gunicorn -b "0.0.0.0:$1" app:app; }
check() { exit 0; }
"$@"
-- app.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
`, ` => any 8108`},
	{"a setting that another file puts into a module", `-- Procfile --
web: python3 app.py
-- requirements.txt --
-- settings.py --
PORTS = [8141]
-- late.py --
import os
import settings
if "WITHOUT" not in os.environ:
    setattr(settings, "PORT", settings.PORTS[0])
-- app.py --
import http.server
import late
import settings
http.server.HTTPServer(("0.0.0.0", settings.PORT), http.server.SimpleHTTPRequestHandler).serve_forever()
`, ` => any 8141
WITHOUT=1 => exits`},
}

func TestFirst(t *testing.T) {
	t.Parallel()
	for _, c := range firstPrograms {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
