package check_test

import "testing"

// passed are programs in which a condition that is not known stands beside the way to the
// server, or a library puts the settings together; what each did was read from the kernel.
var passed = []struct{ name, tree, want string }{
	{"express es module with joi checked settings", `-- Procfile --
web: node src/server.js
-- package.json --
{"name":"domes","version":"1.0.0","type":"module","private":true,"engines":{"node":"20.x"},"dependencies":{"express":"^4.19.0","joi":"^17.0.0"}}
-- src/settings.js --
import Joi from 'joi';

const schema = Joi.object({
  NODE_ENV: Joi.string().valid('production', 'development', 'test').default('development'),
  PORT: Joi.number().port().default(3321),
  HOST: Joi.string().default('0.0.0.0'),
}).unknown();

const { value, error } = schema.prefs({ errors: { label: 'key' } }).validate(process.env);
if (error) {
  throw new Error(` + "`" + `settings: ${error.message}` + "`" + `);
}

export default { env: value.NODE_ENV, port: value.PORT, host: value.HOST };
-- src/server.js --
import express from 'express';
import settings from './settings.js';

const app = express();
app.get('/health', (req, res) => res.sendStatus(200));
const server = app.listen(settings.port, settings.host, () => {
  console.log(` + "`" + `listening on ${settings.host}:${settings.port}` + "`" + `);
});
process.on('SIGTERM', () => server.close());
`, ` => any 3321
PORT=6110 => any 6110
PORT=notaport => exits
NODE_ENV=production PORT=6111 HOST=127.0.0.1 => loopback 6111`},
	{"aiohttp with cli arguments and env default", `-- Procfile --
web: python3 web.py --host ${HOST:-0.0.0.0}
-- requirements.txt --
aiohttp==3.8.4
-- web.py --
import argparse
import logging
import os

from aiohttp import web

routes = web.RouteTableDef()


@routes.get("/")
async def hello(request):
    return web.Response(text="hello")


def make_app():
    app = web.Application()
    app.add_routes(routes)
    return app


def main(argv=None):
    parser = argparse.ArgumentParser(description="aiohttp server")
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", 8430)))
    parser.add_argument("-v", "--verbose", action="count", default=0)
    args = parser.parse_args(argv)
    logging.basicConfig(level=logging.DEBUG if args.verbose else logging.INFO)
    web.run_app(make_app(), host=args.host, port=args.port)


if __name__ == "__main__":
    main()
`, ` => any 8430
PORT=6230 HOST=127.0.0.1 => loopback 6230
PORT=6231 => any 6231`},
	{"gunicorn application class", `-- Procfile --
web: python3 standalone.py
-- requirements.txt --
gunicorn==20.1.0
-- standalone.py --
import os

import gunicorn.app.base


def handler(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"ok"]


class Standalone(gunicorn.app.base.BaseApplication):
    def __init__(self, app, options=None):
        self.options = options or {}
        self.application = app
        super().__init__()

    def load_config(self):
        for key, value in self.options.items():
            if key in self.cfg.settings and value is not None:
                self.cfg.set(key.lower(), value)

    def load(self):
        return self.application


if __name__ == "__main__":
    options = {"bind": "%s:%s" % ("0.0.0.0", os.environ.get("PORT", "8490")), "workers": 1}
    Standalone(handler, options).run()
`, ` => any 8490
PORT=6290 => any 6290`},
	{"dotenv in node with override", `-- Procfile --
web: node -r dotenv/config server.js
-- package.json --
{"name":"d","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"dotenv":"^16.0.0","express":"^4.19.0"}}
-- .env --
PORT=3760
HOST=127.0.0.1
-- .env.live --
PORT=3761
HOST=0.0.0.0
-- server.js --
const express = require('express');
const { PORT, HOST } = process.env;
express().get('/', (q, s) => s.send('ok')).listen(PORT, HOST);
`, ` => loopback 3760
PORT=6760 => loopback 6760
DOTENV_CONFIG_PATH=.env.live => any 3761`},
	{"restify with convict", `-- Procfile --
web: node server.js
-- package.json --
{"name":"r","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"convict":"^6.0.0","polka":"^0.5.0"}}
-- config.js --
const convict = require('convict');
const config = convict({
  env: { format: ['production', 'development', 'test'], default: 'development', env: 'NODE_ENV' },
  server: {
    ip: { format: String, default: '127.0.0.1', env: 'IP_ADDRESS' },
    port: { format: 'port', default: 3770, env: 'PORT', arg: 'port' },
  },
});
const env = config.get('env');
config.loadFile(` + "`" + `./config/${env}.json` + "`" + `);
config.validate({ allowed: 'strict' });
module.exports = config;
-- config/development.json --
{}
-- config/production.json --
{"server":{"ip":"0.0.0.0"}}
-- server.js --
const polka = require('polka');
const config = require('./config');
polka().get('/', (req, res) => res.end('ok')).listen(config.get('server.port'), config.get('server.ip'), (err) => {
  if (err) throw err;
});
`, ` => loopback 3770
PORT=6770 => loopback 6770
NODE_ENV=production => any 3770`},
	{"express with database connect first and graceful shutdown", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"visits","version":"2.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"express":"^4.19.0","pino":"^8.0.0","cors":"^2.0.0","helmet":"^7.0.0"}}
-- src/config.js --
const required = (name) => {
  const value = process.env[name];
  if (value === undefined || value === '') {
    throw new Error(` + "`" + `Missing environment variable ${name}` + "`" + `);
  }
  return value;
};
const optional = (name, fallback) => process.env[name] ?? fallback;
const int = (text) => {
  const n = Number.parseInt(text, 10);
  if (Number.isNaN(n)) throw new TypeError(` + "`" + `Not a number: ${text}` + "`" + `);
  return n;
};

module.exports = {
  http: {
    port: int(optional('PORT', '3901')),
    address: optional('BIND_ADDRESS', '0.0.0.0'),
  },
  log: { level: optional('LOG_LEVEL', 'info') },
  get databaseUrl() { return required('DATABASE_URL'); },
};
-- src/db.js --
class Pool {
  constructor(url) { this.url = url; this.open = false; }
  async connect() { this.open = true; return this; }
  async end() { this.open = false; }
}
let pool;
exports.init = async (url) => {
  if (!url) return null;
  pool = new Pool(url);
  return pool.connect();
};
exports.close = async () => { if (pool) await pool.end(); };
-- src/app.js --
const express = require('express');
const cors = require('cors');
const helmet = require('helmet');

function createApp({ logger }) {
  const app = express();
  app.disable('x-powered-by');
  app.use(helmet());
  app.use(cors({ origin: process.env.CORS_ORIGIN?.split(',') ?? false }));
  app.use((req, res, next) => { logger.debug({ url: req.url }); next(); });
  app.get('/healthz', (req, res) => res.json({ status: 'ok' }));
  app.use((err, req, res, next) => { logger.error(err); res.status(500).end(); });
  return app;
}
module.exports = { createApp };
-- src/index.js --
const pino = require('pino');
const config = require('./config');
const db = require('./db');
const { createApp } = require('./app');

async function main() {
  const logger = pino({ level: config.log.level });
  await db.init(process.env.DATABASE_URL);
  const app = createApp({ logger });
  const server = app.listen(config.http.port, config.http.address, () => {
    logger.info({ port: server.address().port }, 'listening');
  });
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => server.close(async () => { await db.close(); process.exit(0); }));
  }
}

main().catch((err) => { console.error(err); process.exit(1); });
`, ` => any 3901
PORT=6201 => any 6201
PORT=6202 BIND_ADDRESS=127.0.0.1 => loopback 6202`},
	{"flask with blueprint, logging and debug by env", `-- Procfile --
web: python3 wsgi.py
-- requirements.txt --
flask==2.2.2
-- catalogue/__init__.py --
import logging
import os

from flask import Flask


def create_app(settings=None):
    app = Flask(__name__, instance_relative_config=True)
    app.config.from_mapping(
        SECRET_KEY=os.environ.get("SECRET_KEY", "dev"),
        PORT=int(os.environ.get("PORT", 8501)),
        HOST="0.0.0.0" if os.environ.get("FLASK_ENV") == "production" else "127.0.0.1",
    )
    if settings is not None:
        app.config.from_mapping(settings)
    if not app.debug:
        handler = logging.StreamHandler()
        handler.setLevel(logging.INFO)
        app.logger.addHandler(handler)
    try:
        os.makedirs(app.instance_path)
    except OSError:
        pass
    from . import stars
    app.register_blueprint(stars.bp)
    return app
-- catalogue/stars.py --
from flask import Blueprint

bp = Blueprint("stars", __name__)


@bp.route("/")
def index():
    return "stars"
-- wsgi.py --
from catalogue import create_app

app = create_app()

if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"])
`, ` => loopback 8501
FLASK_ENV=production PORT=6401 => any 6401
PORT=6402 DEBUG=0 => loopback 6402`},
	{"ruby settings class with struct", `-- Procfile --
web: ruby main.rb
-- Gemfile --
source 'https://rubygems.org'
-- lib/settings.rb --
module Dome
  Settings = Struct.new(:host, :port, keyword_init: true) do
    def self.load(env = ENV)
      new(**defaults.merge(from(env)))
    end

    def self.defaults
      { host: '127.0.0.1', port: 8690 }
    end

    def self.from(env)
      members.each_with_object({}) do |name, found|
        value = env["DOME_#{name.to_s.upcase}"]
        next if value.nil? || value.empty?
        found[name] = name == :port ? Integer(value) : value
      end
    end
  end
end
-- main.rb --
require 'socket'
require_relative 'lib/settings'

settings = Dome::Settings.load
server = TCPServer.open(settings.host, settings.port)
begin
  while (client = server.accept)
    client.puts 'ok'
    client.close
  end
rescue Interrupt
  server.close
end
`, ` => loopback 8690
DOME_PORT=6640 => loopback 6640
DOME_HOST=0.0.0.0 DOME_PORT=6641 => any 6641`},
	{"shell script choosing the server", `-- Procfile --
web: ./run.sh
-- requirements.txt --
flask==2.2.2
gunicorn==20.1.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
if __name__ == "__main__":
    app.run(port=int(os.environ.get("PORT", 5000)))
-- run.sh exec --
#!/bin/sh
MODE="${MODE:-prod}"
PORT="${PORT:-8920}"
export PORT
case "$MODE" in
  dev)
    exec python3 app.py
    ;;
  prod|production)
    exec gunicorn --bind "0.0.0.0:$PORT" app:app
    ;;
  *)
    echo "unknown mode $MODE" >&2
    exit 2
    ;;
esac
`, ` => any 8920
MODE=dev PORT=6920 => loopback 6920
MODE=prod PORT=6921 => any 6921`},
	{"express typescript compiled commonjs with class server", `-- Procfile --
web: node dist/index.js
-- package.json --
{"name":"e","version":"1.0.0","private":true,"main":"dist/index.js","engines":{"node":"20.x"},"dependencies":{"express":"^4.19.0","dotenv":"^16.0.0"}}
-- .env --
HOST=0.0.0.0
-- dist/config.js --
"use strict";
var __importDefault = (this && this.__importDefault) || function (mod) {
    return (mod && mod.__esModule) ? mod : { "default": mod };
};
Object.defineProperty(exports, "__esModule", { value: true });
exports.config = void 0;
const dotenv_1 = __importDefault(require("dotenv"));
dotenv_1.default.config();
exports.config = {
    port: parseInt(process.env.PORT || '4101', 10),
    host: process.env.HOST || 'localhost',
};
-- dist/server.js --
"use strict";
var __importDefault = (this && this.__importDefault) || function (mod) {
    return (mod && mod.__esModule) ? mod : { "default": mod };
};
Object.defineProperty(exports, "__esModule", { value: true });
exports.Server = void 0;
const express_1 = __importDefault(require("express"));
class Server {
    constructor(config) {
        this.config = config;
        this.app = (0, express_1.default)();
        this.app.get('/', (_req, res) => res.send('ok'));
    }
    start() {
        const { port, host } = this.config;
        return new Promise((resolve) => { this.http = this.app.listen(port, host, () => resolve(this)); });
    }
}
exports.Server = Server;
-- dist/index.js --
"use strict";
var __awaiter = (this && this.__awaiter) || function (thisArg, _arguments, P, generator) {
    function adopt(value) { return value instanceof P ? value : new P(function (resolve) { resolve(value); }); }
    return new (P || (P = Promise))(function (resolve, reject) {
        function fulfilled(value) { try { step(generator.next(value)); } catch (e) { reject(e); } }
        function rejected(value) { try { step(generator["throw"](value)); } catch (e) { reject(e); } }
        function step(result) { result.done ? resolve(result.value) : adopt(result.value).then(fulfilled, rejected); }
        step((generator = generator.apply(thisArg, _arguments || [])).next());
    });
};
Object.defineProperty(exports, "__esModule", { value: true });
const config_1 = require("./config");
const server_1 = require("./server");
function main() {
    return __awaiter(this, void 0, void 0, function* () {
        const server = new server_1.Server(config_1.config);
        yield server.start();
        console.log('started');
    });
}
main();
`, ` => any 4101
PORT=6101 => any 6101
PORT=6102 HOST=127.0.0.1 => loopback 6102`},
	{"node http with unknown feature flag", `-- Procfile --
web: node app.js
-- package.json --
{"name":"u","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"lodash":"^4.0.0"}}
-- app.js --
const http = require('http');
const os = require('os');
const _ = require('lodash');

const debug = os.hostname().endsWith('.local');
if (debug) console.log('debug mode on', os.cpus().length, 'cpus');

const defaults = { server: { port: 4111, host: '0.0.0.0', keepAlive: 5000 } };
const config = _.merge({}, defaults, { server: { port: process.env.PORT } });
const server = http.createServer((req, res) => {
  if (debug) res.setHeader('x-host', os.hostname());
  res.end('ok');
});
server.keepAliveTimeout = config.server.keepAlive;
server.listen(config.server.port, config.server.host);
`, ` => any 4111
PORT=6110 => any 6110`},
	{"python logging config and unknown platform branch", `-- Procfile --
web: python3 -m tracker
-- requirements.txt --
aiohttp==3.8.4
-- tracker/__init__.py --
-- tracker/__main__.py --
import asyncio
import logging
import os
import platform
import sys

from aiohttp import web

log = logging.getLogger("tracker")


def setup():
    level = os.environ.get("LOG_LEVEL", "INFO").upper()
    logging.basicConfig(level=getattr(logging, level, logging.INFO), stream=sys.stderr)
    if platform.system() == "Windows":
        asyncio.set_event_loop_policy(asyncio.WindowsSelectorEventLoopPolicy())
    try:
        import uvloop
    except ImportError:
        log.info("uvloop is not there")
    else:
        uvloop.install()


async def index(request: web.Request) -> web.Response:
    return web.json_response({"ok": True})


def app() -> web.Application:
    a = web.Application()
    a.add_routes([web.get("/", index)])
    return a


def main() -> int:
    setup()
    host, _, port = os.environ.get("TRACKER_BIND", "0.0.0.0:4210").rpartition(":")
    port = os.environ.get("TRACKER_PORT", port)
    web.run_app(app(), host=host or None, port=int(port), print=None)
    return 0


if __name__ == "__main__":
    sys.exit(main())
`, ` => any 4210
TRACKER_PORT=6210 => any 6210`},
	{"http server in thread with context manager and signal", `-- Procfile --
web: python3 app.py
-- requirements.txt --
-- app.py --
import contextlib
import http.server
import os
import signal
import threading


class Handler(http.server.BaseHTTPRequestHandler):
    def do_GET(self):
        self.send_response(200)
        self.end_headers()


@contextlib.contextmanager
def running(address):
    server = http.server.ThreadingHTTPServer(address, Handler)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    try:
        yield server
    finally:
        server.shutdown()


if __name__ == "__main__":
    stop = threading.Event()
    signal.signal(signal.SIGTERM, lambda *_: stop.set())
    with running(("127.0.0.1", int(os.environ.get("PORT", "4230")))):
        stop.wait()
`, ` => loopback 4230
PORT=6230 => loopback 6230`},
	{"click group with context", `-- Procfile --
web: python3 cli.py --config live.toml serve --workers 2
-- requirements.txt --
click==8.1.3
waitress==2.1.2
-- live.toml --
[server]
host = "0.0.0.0"
port = 4240
-- cli.py --
import tomllib

import click
import waitress


def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]


@click.group()
@click.option("--config", type=click.Path(exists=True), required=True)
@click.pass_context
def cli(ctx, config):
    with open(config, "rb") as f:
        ctx.obj = tomllib.load(f)


@cli.command()
@click.option("--port", type=int, envvar="GATE_PORT", default=None)
@click.option("--workers", default=1)
@click.pass_obj
def serve(settings, port, workers):
    server = settings["server"]
    waitress.serve(app, host=server["host"], port=port or server["port"], threads=workers)


if __name__ == "__main__":
    cli()
`, ` => any 4240
GATE_PORT=6240 => any 6240`},
	{"asyncio protocol server with enum and dict dispatch", `-- Procfile --
web: python3 main.py
-- requirements.txt --
-- main.py --
import asyncio
import enum
import os


class Mode(str, enum.Enum):
    LOCAL = "local"
    PUBLIC = "public"

    @property
    def host(self):
        return {Mode.LOCAL: "127.0.0.1", Mode.PUBLIC: "0.0.0.0"}[self]


class Echo(asyncio.Protocol):
    def connection_made(self, transport):
        transport.write(b"ok\n")
        transport.close()


async def main():
    mode = Mode(os.environ.get("MODE", "local"))
    loop = asyncio.get_running_loop()
    server = await loop.create_server(Echo, mode.host, int(os.environ.get("PORT", 4260)))
    async with server:
        await server.serve_forever()


asyncio.run(main())
`, ` => loopback 4260
MODE=public PORT=6260 => any 6260
MODE=odd => exits`},
	{"go with slog and unknown hostname branch", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"fmt"
	"log/slog"
	"net/http"
	"os"
	"runtime"
	"strings"
	"time"
)

type app struct {
	logger *slog.Logger
	start  time.Time
	addr   string
}

func newApp() *app {
	level := slog.LevelInfo
	if os.Getenv("DEBUG") != "" {
		level = slog.LevelDebug
	}
	a := &app{
		logger: slog.New(slog.NewJSONHandler(os.Stdout, &slog.HandlerOptions{Level: level})),
		start:  time.Now(),
		addr:   "localhost:4301",
	}
	host, err := os.Hostname()
	if err != nil {
		host = "unknown"
	}
	if strings.HasSuffix(host, ".local") {
		a.logger.Warn("running on a laptop", "host", host)
	}
	if v := os.Getenv("ADDR"); v != "" {
		a.addr = v
	}
	return a
}

func (a *app) routes() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /", func(w http.ResponseWriter, r *http.Request) {
		fmt.Fprintf(w, "%s up %s\n", runtime.Version(), time.Since(a.start))
	})
	return mux
}

func main() {
	a := newApp()
	a.logger.Info("starting", "addr", a.addr)
	if err := http.ListenAndServe(a.addr, a.routes()); err != nil {
		a.logger.Error("stopped", "err", err)
		os.Exit(1)
	}
}
`, ` => loopback 4301
ADDR=:6301 => any 6301`},
	{"echo start server with custom http server", `-- Procfile --
web: ./e
-- go.mod --
module e

go 1.22

require github.com/labstack/echo/v4 v4.12.0
-- main.go --
package main

import (
	"net/http"
	"os"
	"time"

	"github.com/labstack/echo/v4"
	"github.com/labstack/echo/v4/middleware"
)

func main() {
	e := echo.New()
	e.HideBanner, e.HidePort = true, true
	e.Use(middleware.Recover())
	e.GET("/", func(c echo.Context) error { return c.NoContent(http.StatusOK) })
	port, ok := os.LookupEnv("PORT")
	if !ok {
		port = "4330"
	}
	s := &http.Server{Addr: "0.0.0.0:" + port, ReadHeaderTimeout: 3 * time.Second}
	if err := e.StartServer(s); err != http.ErrServerClosed {
		e.Logger.Fatal(err)
	}
}
`, ` => any 4330
PORT=6330 => any 6330`},
	{"ruby rack server by class with options hash", `-- Procfile --
web: ruby bin/serve
-- Gemfile --
source 'https://rubygems.org'
gem 'rack'
gem 'webrick'
-- lib/gate/options.rb --
module Gate
  module Options
    DEFAULTS = { Host: '127.0.0.1', Port: 4410 }.freeze
    PER_ENV = Hash.new { |h, k| h[k] = {} }.merge('production' => { Host: '0.0.0.0' }).freeze

    module_function

    def build(env = ENV)
      opts = DEFAULTS.merge(PER_ENV.fetch(env.fetch('RACK_ENV', 'development'), {}))
      opts[:Port] = env['PORT'].to_i if env.key?('PORT')
      opts
    end
  end
end
-- bin/serve exec --
#!/usr/bin/env ruby
# frozen_string_literal: true

$LOAD_PATH.unshift File.expand_path('../lib', __dir__)
require 'rack/handler/webrick'
require 'gate/options'

app = proc { [200, { 'Content-Type' => 'text/plain' }, ['ok']] }
Rack::Handler::WEBrick.run(app, **Gate::Options.build)
`, ` => loopback 4410
RACK_ENV=production => any 4410
RACK_ENV=production PORT=6410 => any 6410`},
	{"php swoole-less server with enum and match", `-- Procfile --
web: php server.php --mode=public
-- server.php --
<?php

declare(strict_types=1);

enum Mode: string
{
    case Local = 'local';
    case Public = 'public';

    public function host(): string
    {
        return match ($this) {
            self::Local => '127.0.0.1',
            self::Public => '0.0.0.0',
        };
    }
}

$options = getopt('', ['mode::', 'port::']);
$mode = Mode::from($options['mode'] ?? 'local');
$port = (int) ($options['port'] ?? ($_SERVER['PORT'] ?? 4501));
$socket = stream_socket_server("tcp://{$mode->host()}:$port", $no, $text);
if (!$socket) {
    throw new RuntimeException($text, $no);
}
for (;;) {
    if ($client = @stream_socket_accept($socket, -1)) {
        fclose($client);
    }
}
`, ` => any 4501
PORT=6501 => any 6501`},
	{"java with interface config sources", `-- Procfile --
web: java Gate.java -Dx=1 --http.port=4601
-- Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;

public class Gate {
    interface Source {
        Optional<String> get(String key);
    }

    record Env() implements Source {
        public Optional<String> get(String key) {
            return Optional.ofNullable(System.getenv(key.toUpperCase(Locale.ROOT).replace('.', '_')));
        }
    }

    record Args(String[] args) implements Source {
        public Optional<String> get(String key) {
            for (String a : args) {
                if (a.startsWith("--" + key + "=")) {
                    return Optional.of(a.substring(key.length() + 3));
                }
            }
            return Optional.empty();
        }
    }

    static final class Config {
        private final List<Source> sources = new ArrayList<>();

        Config with(Source s) { sources.add(s); return this; }

        <T> T get(String key, Function<String, T> parse, T fallback) {
            for (Source s : sources) {
                Optional<String> v = s.get(key);
                if (v.isPresent()) {
                    return parse.apply(v.get());
                }
            }
            return fallback;
        }
    }

    public static void main(String[] args) throws IOException {
        Config c = new Config().with(new Env()).with(new Args(args));
        int port = c.get("http.port", Integer::valueOf, 8080);
        String host = c.get("http.host", Function.identity(), "127.0.0.1");
        HttpServer s = HttpServer.create(new InetSocketAddress(host, port), 0);
        s.start();
    }
}
`, ` => loopback 4601
HTTP_PORT=6601 => loopback 6601`},
	{"express with session store and feature toggles", `-- Procfile --
web: node server/index.js
-- package.json --
{"name":"obs","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"express":"^4.19.0"}}
-- server/settings/index.js --
'use strict';
const path = require('path');
const pick = (...names) => names.map((n) => process.env[n]).find((v) => v !== undefined && v !== '');
const stage = pick('APP_ENV', 'NODE_ENV') || 'development';
const byStage = {
  development: { host: '127.0.0.1', trust: false },
  production: { host: '0.0.0.0', trust: true },
};
const settings = {
  stage,
  root: path.resolve(__dirname, '..', '..'),
  port: Number(pick('SERVER_PORT', 'PORT') || 4501),
  ...(byStage[stage] || byStage.development),
  get isProduction() { return this.stage === 'production'; },
};
module.exports = settings;
-- server/index.js --
'use strict';
const express = require('express');
const settings = require('./settings');
const app = express();
if (settings.trust) app.set('trust proxy', 1);
app.use(express.urlencoded({ extended: false }));
app.get('/', (req, res) => res.send(settings.isProduction ? 'live' : 'dev'));
const http = require('http').Server(app);
http.listen(settings.port, settings.host, function () {
  const { address, port } = this.address();
  console.log('Listening on %s:%d', address, port);
});
`, ` => loopback 4501
PORT=6101 NODE_ENV=production => any 6101
SERVER_PORT=6102 PORT=6103 => loopback 6102`},
	{"koa router with yaml config and env placeholders", `-- Procfile --
web: node app.js
-- package.json --
{"name":"ky","version":"1.0.0","private":true,"engines":{"node":"20.x"},"dependencies":{"koa":"^2.15.0","js-yaml":"^4.1.0"}}
-- config.yml --
server:
  host: ${KOA_HOST:-127.0.0.1}
  port: ${KOA_PORT:-4521}
-- app.js --
const fs = require('fs');
const Koa = require('koa');
const yaml = require('js-yaml');
const text = fs.readFileSync('config.yml', 'utf8').replace(/\$\{(\w+):-([^}]*)\}/g, (_, name, def) => process.env[name] || def);
const { server } = yaml.load(text);
const app = new Koa();
app.use((ctx) => { ctx.body = 'ok'; });
app.listen(server.port, server.host);
`, ` => loopback 4521
KOA_PORT=6120 => loopback 6120`},
	{"typescript dependency injection container", `-- Procfile --
web: npx tsx src/main.ts
-- package.json --
{"name":"di","version":"1.0.0","private":true,"type":"module","engines":{"node":"20.x"},"dependencies":{"tsx":"^4.0.0"}}
-- src/container.ts --
type Token<T> = { readonly name: string; readonly _t?: T };
export const token = <T>(name: string): Token<T> => ({ name });
export class Container {
  private readonly makers = new Map<string, (c: Container) => unknown>();
  private readonly made = new Map<string, unknown>();
  bind<T>(t: Token<T>, make: (c: Container) => T): this {
    this.makers.set(t.name, make);
    return this;
  }
  get<T>(t: Token<T>): T {
    if (!this.made.has(t.name)) {
      const make = this.makers.get(t.name);
      if (!make) throw new Error(` + "`" + `nothing is bound to ${t.name}` + "`" + `);
      this.made.set(t.name, make(this));
    }
    return this.made.get(t.name) as T;
  }
}
-- src/main.ts --
import { createServer, type Server } from 'node:http';
import { Container, token } from './container.ts';

interface Address { host: string; port: number }
const ADDRESS = token<Address>('address');
const SERVER = token<Server>('server');

const c = new Container()
  .bind(ADDRESS, () => {
    const listen = process.env.LISTEN;
    if (listen) {
      const at = listen.lastIndexOf(':');
      return { host: listen.slice(0, at), port: Number(listen.slice(at + 1)) };
    }
    return { host: '127.0.0.1', port: Number(process.env.PORT ?? 4541) };
  })
  .bind(SERVER, () => createServer((_, res) => { res.end('ok'); }));

const { host, port } = c.get(ADDRESS);
c.get(SERVER).listen(port, host);
`, ` => loopback 4541
PORT=6140 => loopback 6140
LISTEN=0.0.0.0:6141 => any 6141`},
	{"waitress serve command with call", `-- Procfile --
web: waitress-serve --host=0.0.0.0 --port=${PORT:-4631} --call catalogue.app:build
-- requirements.txt --
waitress==2.1.2
-- catalogue/__init__.py --
-- catalogue/app.py --
def build():
    def app(environ, start_response):
        start_response("200 OK", [])
        return [b"ok"]
    return app
`, ` => any 4631
PORT=6230 => any 6230`},
	{"abstract settings classes and registry decorator", `-- Procfile --
web: python3 run.py
-- requirements.txt --
bottle==0.12.23
-- profiles.py --
import abc
import os

REGISTRY = {}


def profile(name):
    def register(cls):
        REGISTRY[name] = cls
        cls.name = name
        return cls
    return register


class Profile(abc.ABC):
    name = ""
    port = 4661

    @property
    @abc.abstractmethod
    def host(self): ...

    @classmethod
    def current(cls):
        wanted = os.environ.get("PROFILE", "local")
        try:
            return REGISTRY[wanted]()
        except KeyError:
            raise SystemExit(f"no profile {wanted}: {', '.join(sorted(REGISTRY))}") from None


@profile("local")
class Local(Profile):
    host = "localhost"


@profile("live")
class Live(Profile):
    host = "0.0.0.0"
    port = Profile.port + 1
-- run.py --
from bottle import Bottle
from profiles import Profile

app = Bottle()
app.route("/")(lambda: "ok")
current = Profile.current()
app.run(server="wsgiref", host=current.host, port=current.port, quiet=True)
`, ` => loopback 4661
PROFILE=live => any 4662
PROFILE=none => exits`},
	{"gunicorn by make like shell function", `-- Procfile --
web: ./bin/web
-- requirements.txt --
flask==2.2.2
gunicorn==20.1.0
-- app.py --
from flask import Flask
app = Flask(__name__)
-- bin/web exec --
#!/usr/bin/env bash
set -Eeuo pipefail

die() { echo "$*" >&2; exit 1; }
have() { command -v "$1" >/dev/null 2>&1; }

have gunicorn || die "gunicorn is not installed"
bind=${WEB_BIND:-0.0.0.0:${PORT:-4671}}
args=(--bind "$bind" --workers 1)
exec gunicorn "${args[@]}" app:app
`, ` => any 4671
PORT=6270 => any 6270
WEB_BIND=127.0.0.1:6271 => loopback 6271`},
	{"go server generic option and unix fallback", `-- Procfile --
web: ./o
-- go.mod --
module o

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

func listener(spec string) (net.Listener, error) {
	network, address, found := strings.Cut(spec, ":")
	if !found {
		return net.Listen("tcp", spec)
	}
	if network == "unix" {
		_ = os.Remove(address)
	}
	return net.Listen(network, address)
}

func main() {
	spec, ok := os.LookupEnv("LISTEN")
	if !ok {
		spec = "tcp:0.0.0.0:4731"
	}
	l, err := listener(spec)
	if err != nil {
		log.Fatal(err)
	}
	log.Printf("listening on %s", l.Addr())
	log.Fatal(http.Serve(l, http.NotFoundHandler()))
}
`, ` => any 4731
LISTEN=tcp:127.0.0.1:6330 => loopback 6330`},
	{"ruby drb like tcp with keyword options and comparable", `-- Procfile --
web: ruby -Ilib exe/gate --port 6410 --verbose
-- Gemfile --
source 'https://rubygems.org'
-- lib/gate.rb --
require 'optparse'
require 'socket'

class Gate
  Options = Struct.new(:bind, :port, :verbose)

  def self.parse(argv)
    options = Options.new(ENV.fetch('GATE_BIND', '0.0.0.0'), 4811, false)
    OptionParser.new do |parser|
      parser.on('--port=PORT', Integer) { |v| options.port = v }
      parser.on('--bind=HOST') { |v| options.bind = v }
      parser.on('-v', '--[no-]verbose') { |v| options.verbose = v }
    end.parse(argv)
    options
  end

  def initialize(options) = @options = options

  def call
    warn "listening on #{@options.port}" if @options.verbose
    Socket.tcp_server_sockets(@options.bind, @options.port) do |sockets|
      Socket.accept_loop(sockets) { |client, _| client.close }
    end
  end
end
-- exe/gate exec --
#!/usr/bin/env ruby
require 'gate'
Gate.new(Gate.parse(ARGV)).call
`, ` => any 6410
GATE_BIND=127.0.0.1 => loopback 6410`},
	{"php built in in public with ini and env expansion", `-- Procfile --
web: sh -c 'php -S "${HOST:-127.0.0.1}:${PORT:-4911}" -t public'
-- composer.json --
{"name":"obs/site","require":{"php":">=8.1"}}
-- public/index.php --
<?php echo 'ok';
`, ` => loopback 4911
HOST=0.0.0.0 PORT=6510 => any 6510`},
	{"java thread server with inner builder and optional int", `-- Procfile --
web: java Echo.java 6610
-- Echo.java --
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.OptionalInt;

public class Echo {
    static OptionalInt argument(String[] args, int i) {
        if (args.length <= i) return OptionalInt.empty();
        try {
            return OptionalInt.of(Integer.parseInt(args[i]));
        } catch (NumberFormatException e) {
            return OptionalInt.empty();
        }
    }

    public static void main(String[] args) throws IOException {
        final int port = argument(args, 0).orElse(5011);
        final String host = System.getenv().getOrDefault("ECHO_HOST", "localhost");
        try (var server = new ServerSocket(port, 16, InetAddress.getByName(host))) {
            for (Socket s; (s = server.accept()) != null; ) {
                s.close();
            }
        }
    }
}
`, ` => loopback 6610
ECHO_HOST=0.0.0.0 => any 6610`},
	{"go listener with config watcher goroutine and ticker", `-- Procfile --
web: ./q -config q.json
-- go.mod --
module q

go 1.22
-- q.json --
{"addr": "0.0.0.0:4721", "interval": "30s"}
-- main.go --
package main

import (
	"encoding/json"
	"flag"
	"log"
	"net"
	"net/http"
	"os"
	"sync/atomic"
	"time"
)

type config struct {
	Addr     string ` + "`" + `json:"addr"` + "`" + `
	Interval string ` + "`" + `json:"interval"` + "`" + `
}

var current atomic.Pointer[config]

func load(name string) error {
	f, err := os.Open(name)
	if err != nil {
		return err
	}
	defer f.Close()
	c := new(config)
	if err := json.NewDecoder(f).Decode(c); err != nil {
		return err
	}
	if a := os.Getenv("Q_ADDR"); a != "" {
		c.Addr = a
	}
	current.Store(c)
	return nil
}

func main() {
	name := flag.String("config", "config.json", "file")
	flag.Parse()
	if err := load(*name); err != nil {
		log.Fatal(err)
	}
	d, err := time.ParseDuration(current.Load().Interval)
	if err != nil {
		d = time.Minute
	}
	go func() {
		for range time.Tick(d) {
			if err := load(*name); err != nil {
				log.Println("reload:", err)
			}
		}
	}()
	l, err := net.Listen("tcp", current.Load().Addr)
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.Serve(l, http.NotFoundHandler()))
}
`, ` => any 4721
Q_ADDR=127.0.0.1:6320 => loopback 6320`},
	{"java record config with varargs and stream reduce", `-- Procfile --
web: java Port.java
-- Port.java --
import java.net.ServerSocket;
import java.net.InetAddress;
import java.util.Objects;
import java.util.stream.Stream;

public class Port {
    static int first(int fallback, String... names) {
        return Stream.of(names)
            .map(System::getenv)
            .filter(Objects::nonNull)
            .map(String::trim)
            .filter(s -> s.chars().allMatch(Character::isDigit))
            .mapToInt(Integer::parseInt)
            .findFirst()
            .orElse(fallback);
    }

    public static void main(String[] args) throws Exception {
        try (ServerSocket s = new ServerSocket(first(5001, "A_PORT", "B_PORT"), 5, InetAddress.getLoopbackAddress())) {
            while (true) s.accept().close();
        }
    }
}
`, ` => loopback 5001
B_PORT=6601 => loopback 6601
A_PORT=6602 B_PORT=6603 => loopback 6602`},
	{"deno http with router class and top level await import", `-- Procfile --
web: deno run --allow-net --allow-env --allow-read server.ts
-- config/default.ts --
export default { port: 5101, hostname: "0.0.0.0" };
-- server.ts --
class Router {
  #routes = new Map<string, () => Response>();
  on(path: string, f: () => Response) { this.#routes.set(path, f); return this; }
  handle = (req: Request) => this.#routes.get(new URL(req.url).pathname)?.() ?? new Response(null, { status: 404 });
}
const stage = Deno.env.get("STAGE") ?? "default";
const { default: config } = await import(` + "`" + `./config/${stage}.ts` + "`" + `);
const router = new Router().on("/", () => new Response("ok"));
Deno.serve({ ...config, port: Number(Deno.env.get("PORT") || config.port) }, router.handle);
`, ` => any 5101
PORT=6701 => any 6701`},
	{"shell with dot env sourcing and getopts", `-- Procfile --
web: ./serve.sh -p 6801
-- requirements.txt --
-- defaults.sh exec --
: "${HOST:=0.0.0.0}"
-- serve.sh exec --
#!/bin/sh
set -eu
cd "$(dirname "$0")"
. ./defaults.sh
port=8000
while getopts p: opt; do
  case "$opt" in
    p) port=$OPTARG ;;
    *) exit 2 ;;
  esac
done
exec python3 -m http.server --bind "$HOST" "$port"
`, ` => any 6801
HOST=127.0.0.1 => loopback 6801`},
	{"node dotenv outside production", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"engines":{"node":"20.x"},"dependencies":{"dotenv":"^16.0.0"}}
-- .env --
PORT=6013
-- s.js --
if (process.env.NODE_ENV !== 'production') {
  require('dotenv').config();
}
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 6014);
`, ` => any 6013
NODE_ENV=production => any 6014
PORT=6012 => any 6012`},
	{"python dotenv when local", `-- Procfile --
web: python3 s.py
-- requirements.txt --
python-dotenv==0.21.0
-- .env --
PORT=6023
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
from dotenv import load_dotenv

if os.environ.get("LOCAL"):
    load_dotenv()
HTTPServer(("", int(os.environ.get("PORT", 6024))), BaseHTTPRequestHandler).serve_forever()
`, ` => any 6024
LOCAL=1 => any 6023`},
	{"shell run modes with argument", `-- Procfile --
web: ./start.sh web
-- requirements.txt --
-- start.sh exec --
#!/bin/bash
set -e
cmd="$1"
shift || true
case "$cmd" in
  web) exec python3 -m http.server "${PORT:-6033}" --bind 0.0.0.0 ;;
  shell) exec bash ;;
  *) echo unknown; exit 1 ;;
esac
`, ` => any 6033
PORT=6032 => any 6032`},
	{"entry point with if first argument", `-- Procfile --
web: ./entry.sh python3 -m http.server 6041 --bind 127.0.0.1
-- requirements.txt --
-- entry.sh exec --
#!/bin/sh
set -e
if [ "$1" = "migrate" ]; then
  echo migrating
  exit 0
fi
if [ $# -eq 0 ]; then
  set -- python3 -m http.server 6042
fi
exec "$@"
`, ` => loopback 6041`},
	{"entry point with default mode", `-- Procfile --
web: ./entry.sh
-- requirements.txt --
-- entry.sh exec --
#!/bin/sh
mode=${1:-serve}
if [ "$mode" = serve ]; then
  exec python3 -m http.server ${PORT:-6044}
else
  exec "$@"
fi
`, ` => any 6044
PORT=6045 => any 6045`},
	{"lodash put together", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true,"engines":{"node":"20.x"},"dependencies":{"lodash":"^4.0.0","deepmerge":"^4.0.0","defu":"^6.0.0","object-assign":"^4.0.0"}}
-- s.js --
const _ = require('lodash');
const merge = require('lodash/merge');
const { defaultsDeep } = require('lodash');
const deepmerge = require('deepmerge');
const { defu } = require('defu');
const assign = require('object-assign');
const a = merge({ p: 1, l: [1, 2], n: null }, { p: undefined, l: [5], n: { x: 2 } });
const b = defaultsDeep({ s: { q: 3 } }, { s: { q: 4, r: 5 } }, { s: { r: 9, t: 1 } });
const c = deepmerge({ l: [1], o: { k: 1 } }, { l: [2], o: { m: 2 } });
const d = defu({ u: null, x: { y: 1 } }, { u: 7, x: { y: 2, z: 3 }, l: [1] }, { l: [2] });
const e = _.set({}, 'http.port', 6000);
const f = assign({}, { v: 1 }, null, { w: 2 });
const sum = a.p + a.l[0] + a.l[1] + a.n.x + b.s.q + b.s.r + b.s.t + c.l.length + c.o.k + c.o.m + d.u + d.x.y + d.x.z + d.l.length + f.v + f.w + _.get(e, 'http.host', 3) + _.pick({ i: 1, j: 2 }, ['i']).i + (_.isEmpty({}) ? 1 : 0) + _.defaults({ k: undefined }, { k: 8 }).k;
const port = _.get(process.env, 'PORT', e.http.port + sum);
require('http').createServer((q, s) => s.end()).listen(port);
`, ` => any 6053
PORT=6012 => any 6012`},
}

func TestPassed(t *testing.T) {
	t.Parallel()
	for _, c := range passed {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
