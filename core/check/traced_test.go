package check_test

import "testing"

// traced are programs that make the address they listen on in ways of their own:
// loops, objects that change, functions that are handed over, files in a form
// of one's own. Each was run in the environments that stand beside it; what it
// did was read from the kernel.
var traced = []struct{ name, tree, want string }{
	{"Go: lists with an item that is not known", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"
	"slices"
)

func main() {
	name, _ := os.Hostname()
	port := 8600 + len(slices.Compact([]string{name, "dome"}))
	if os.Getenv("ONE") != "" {
		port = 8610
		if slices.Equal([]string{name, "a"}, []string{"dome", "a"}) {
			port = 8611
		}
	}
	if os.Getenv("TWO") != "" {
		port = 8620
		if slices.Equal([]string{name, "a"}, []string{"dome"}) {
			port = 8621
		}
		port += len(slices.Compact([]string{"dome", "dome", "gate"}))
	}
	if os.Getenv("THREE") != "" {
		port = 8630 + slices.IndexFunc([]string{"gate", "dome"}, func(s string) bool { return s == "dome" })
	}
	http.ListenAndServe(fmt.Sprintf(":%d", port), nil)
}
`, ` => unknown
ONE=1 => unknown
TWO=1 => any 8622
THREE=1 => any 8631`},
	{"JavaScript: the name of the machine in lists and texts", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const name = require('os').hostname();
let port = 8702;
if (process.env.WAY === 'list') port = ['x', name].includes('dome') ? 8701 : 8702;
if (process.env.WAY === 'found') port = ['dome', name].includes('dome') ? 8701 : 8702;
if (process.env.WAY === 'place') port = 8700 + ['x', name].indexOf('dome');
if (process.env.WAY === 'first') port = 8700 + ['x', name].indexOf('x');
if (process.env.WAY === 'text') port = 'dome-east'.startsWith(name) ? 8701 : 8702;
if (process.env.WAY === 'set') port = 8700 + new Set(['dome', name]).size;
if (process.env.WAY === 'one') port = 8700 + new Set([name]).size;
require('http').createServer().listen(port);
`, ` => any 8702
WAY=list => unknown
WAY=found => any 8701
WAY=place => unknown
WAY=first => any 8700
WAY=text => unknown
WAY=set => unknown
WAY=one => any 8701`},
	{"Python: the name of the machine in lists and orders", `-- Procfile --
web: python server.py
-- requirements.txt --

-- server.py --
import os
import socket
from http.server import BaseHTTPRequestHandler, HTTPServer

name = socket.gethostname()
way = os.environ.get("WAY", "")
port = 8712
if way == "count":
    port = 8710 + ["dome", name].count("dome")
elif way == "order":
    port = sorted([8711, 8712], reverse=name == "dome")[0]
elif way == "down":
    port = sorted([8711, 8712], reverse=way == "down")[0]
elif way == "same":
    port = 8711 if {"dome"} == {name} else 8712
elif way == "known":
    port = 8710 + ["dome", "gate"].count("dome")
HTTPServer(("", port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8712
WAY=count => unknown
WAY=order => unknown
WAY=down => any 8712
WAY=same => unknown
WAY=known => any 8711`},
	{"Go: the name of the machine in texts and comparisons", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"
	"strings"
)

func on(yes bool) int {
	if yes {
		return 8721
	}
	return 8722
}

func main() {
	name, _ := os.Hostname()
	port := 8722
	switch os.Getenv("WAY") {
	case "begins":
		port = on(strings.HasPrefix("dome", name))
	case "any":
		port = on(strings.ContainsAny("dome", name))
	case "array":
		port = on([1]string{name} == [1]string{"dome"})
	case "structure":
		port = on(struct{ a string }{name} == struct{ a string }{"dome"})
	case "known":
		port = on(struct{ a string }{"dome"} == struct{ a string }{"dome"})
	case "repeat":
		port = 8720 + len(strings.Repeat("a", len(name)))
	}
	http.ListenAndServe(fmt.Sprintf(":%d", port), nil)
}
`, ` => any 8722
WAY=begins => unknown
WAY=any => unknown
WAY=array => unknown
WAY=structure => unknown
WAY=known => any 8721
WAY=repeat => unknown`},
	{"JavaScript: LISTEN host:port split", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const http = require('http');

function parseListen(spec) {
  const at = spec.lastIndexOf(':');
  const host = spec.slice(0, at) || '0.0.0.0';
  const port = Number(spec.slice(at + 1));
  if (!Number.isInteger(port)) throw new Error('bad LISTEN ' + spec);
  return { host, port };
}
const { host, port } = parseListen(process.env.LISTEN || '0.0.0.0:8501');
http.createServer((q, s) => s.end('gate')).listen(port, host);
`, ` => any 8501
LISTEN=127.0.0.1:5123 => loopback 5123
LISTEN=:5124 => any 5124`},
	{"JavaScript: settings of an environment that may have none", `-- Procfile --
web: node src/main.js
-- package.json --
{"name":"gate"}
-- src/config/index.js --
const env = process.env.NODE_ENV || 'development';
const base = require('./base');
let extra = {};
try { extra = require('./' + env); } catch (e) { if (e.code !== 'MODULE_NOT_FOUND') throw e; }
module.exports = { ...base, ...extra };
-- src/config/base.js --
module.exports = { host: '127.0.0.1', port: parseInt(process.env.PORT, 10) || 8301 };
-- src/config/production.js --
module.exports = { host: '0.0.0.0' };
-- src/main.js --
const { host, port } = require('./config');
require('http').createServer((q, r) => r.end('gate')).listen(port, host);
`, ` => loopback 8301
PORT=5123 => loopback 5123
NODE_ENV=production => any 8301`},
	{"JavaScript: JSON in a variable", `-- Procfile --
web: node server.mjs
-- package.json --
{"name":"gate","type":"module"}
-- server.mjs --
import { createServer } from 'node:http';

const defaults = { host: '0.0.0.0', port: 8502 };
let given = {};
try {
  given = JSON.parse(process.env.GATE_CONFIG ?? '{}');
} catch (error) {
  console.error('GATE_CONFIG is not JSON, using defaults');
}
const settings = Object.freeze({ ...defaults, ...given });
createServer((req, res) => res.end('gate')).listen(settings);
`, ` => any 8502
GATE_CONFIG={"port":5123} => any 5123
GATE_CONFIG={"port":5123,"host":"127.0.0.1"} => loopback 5123
GATE_CONFIG={bad => any 8502`},
	{"JavaScript: class hierarchy of servers", `-- Procfile --
web: node main.js
-- package.json --
{"name":"dome"}
-- servers.js --
const http = require('http');

class BaseServer {
  constructor(options = {}) {
    this.options = { ...this.constructor.defaults, ...options };
  }
  handler() { return (req, res) => res.end('base'); }
  start() {
    const { port, host } = this.options;
    return http.createServer(this.handler()).listen(port, host);
  }
}
BaseServer.defaults = { host: '127.0.0.1', port: 8504 };

class PublicServer extends BaseServer {
  static get defaults() { return { host: '0.0.0.0', port: Number(process.env.PORT) || 8505 }; }
}
class AdminServer extends BaseServer {
  handler() { return (req, res) => res.end('admin'); }
}
module.exports = { PublicServer, AdminServer };
-- main.js --
const { PublicServer, AdminServer } = require('./servers');
const Kind = process.env.MODE === 'admin' ? AdminServer : PublicServer;
new Kind().start();
`, ` => any 8505
PORT=5123 => any 5123
MODE=admin => loopback 8504`},
	{"JavaScript: builder", `-- Procfile --
web: node index.js
-- package.json --
{"name":"sky"}
-- lib/server-builder.js --
const http = require('node:http');

class ServerBuilder {
  #port = 8506;
  #host;
  #handler = () => {};
  withPort(port) { if (port) this.#port = +port; return this; }
  withHost(host) { this.#host = host; return this; }
  withHandler(handler) { this.#handler = handler; return this; }
  listen() {
    return http.createServer(this.#handler).listen(this.#port, this.#host);
  }
}
module.exports = { ServerBuilder };
-- index.js --
const { ServerBuilder } = require('./lib/server-builder');

new ServerBuilder()
  .withPort(process.env.PORT)
  .withHost(process.env.HOST)
  .withHandler((req, res) => res.end('sky'))
  .listen();
`, ` => any 8506
PORT=5123 => any 5123
HOST=127.0.0.1 PORT=5123 => loopback 5123`},
	{"JavaScript: prefix filter of environment", `-- Procfile --
web: node server.js
-- package.json --
{"name":"dome"}
-- server.js --
const http = require('http');
const PREFIX = 'DOME_';
const overrides = Object.fromEntries(
  Object.entries(process.env)
    .filter(([key]) => key.startsWith(PREFIX))
    .map(([key, value]) => [key.slice(PREFIX.length).toLowerCase(), value]),
);
const config = { host: '0.0.0.0', port: '8507', ...overrides };
http.createServer((q, r) => r.end('dome')).listen(Number(config.port), config.host);
`, ` => any 8507
DOME_PORT=5123 => any 5123
DOME_HOST=127.0.0.1 DOME_PORT=5123 => loopback 5123`},
	{"JavaScript: async main with await config", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"bookings","type":"module","dependencies":{"fastify":"^5"}}
-- src/config.js --
import { readFile } from 'node:fs/promises';

export async function loadConfig(env = process.env.NODE_ENV ?? 'development') {
  const url = new URL(` + "`" + `../config/${env}.json` + "`" + `, import.meta.url);
  const text = await readFile(url, 'utf8');
  const file = JSON.parse(text);
  return {
    host: file.host ?? '127.0.0.1',
    port: process.env.PORT ? parseInt(process.env.PORT, 10) : file.port,
  };
}
-- config/development.json --
{"port": 8508}
-- config/production.json --
{"port": 8509, "host": "0.0.0.0"}
-- src/index.js --
import Fastify from 'fastify';
import { loadConfig } from './config.js';

const main = async () => {
  const config = await loadConfig();
  const app = Fastify();
  app.get('/', async () => 'bookings');
  await app.listen({ port: config.port, host: config.host });
};
main().catch((e) => { console.error(e); process.exit(1); });
`, ` => loopback 8508
PORT=5123 => loopback 5123
NODE_ENV=production => any 8509`},
	{"JavaScript: switch in function with default throw", `-- Procfile --
web: node server.js
-- package.json --
{"name":"map"}
-- server.js --
const http = require('http');
function portFor(stage) {
  switch (stage) {
    case 'live':
      return 8510;
    case 'test':
    case 'ci':
      return 8511;
    case undefined:
      return 8512;
    default:
      throw new RangeError(` + "`" + `no port for ${stage}` + "`" + `);
  }
}
const stage = process.env.STAGE;
const server = http.createServer((q, r) => r.end('map'));
server.listen(portFor(stage), stage === 'live' ? '0.0.0.0' : '127.0.0.1');
`, `STAGE=live => any 8510
STAGE=test => loopback 8511
STAGE=unknown => exits
 => loopback 8512`},
	{"JavaScript: hapi with dotenv expand and number checks", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"@hapi/hapi":"^21","dotenv":"^16"}}
-- .env --
HOST=0.0.0.0
PORT=8513
-- server.js --
require('dotenv').config({ quiet: true });
const Hapi = require('@hapi/hapi');
const int = (name) => {
  const n = Number.parseInt(process.env[name], 10);
  if (Number.isNaN(n)) throw new TypeError(` + "`" + `${name} must be a number` + "`" + `);
  return n;
};
(async () => {
  const server = Hapi.server({ port: int('PORT'), host: process.env.HOST });
  await server.start();
})();
`, ` => any 8513
PORT=5123 => any 5123
PORT=80x => any 80`},
	{"TypeScript: enum and record", `-- Procfile --
web: tsx src/main.ts
-- package.json --
{"name":"catalogue","type":"module","dependencies":{"tsx":"*","hono":"^4","@hono/node-server":"^2"}}
-- src/env.ts --
export enum Stage { Dev = 'dev', Prod = 'prod' }

export const stage: Stage = (process.env.APP_ENV as Stage) ?? Stage.Dev;

const ports: Record<Stage, number> = {
  [Stage.Dev]: 8514,
  [Stage.Prod]: 8515,
};
export const port = Number(process.env.PORT ?? ports[stage]);
-- src/main.ts --
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { port, stage, Stage } from './env';

const app = new Hono();
app.get('/', (c) => c.text('stars'));
serve({ fetch: app.fetch, port, hostname: stage === Stage.Prod ? '0.0.0.0' : 'localhost' });
`, ` => loopback 8514
APP_ENV=prod => any 8515
APP_ENV=prod PORT=5123 => any 5123`},
	{"JavaScript: minimist with boolean", `-- Procfile --
web: node cli.js --public -p 8516
-- package.json --
{"name":"gate","dependencies":{"minimist":"^1"}}
-- cli.js --
const argv = require('minimist')(process.argv.slice(2), {
  boolean: ['public'],
  alias: { p: 'port' },
  default: { port: 8000 },
});
require('http').createServer((q, r) => r.end()).listen(argv.port, argv.public ? '0.0.0.0' : '127.0.0.1');
`, ` => any 8516
HOST=10.1.2.3 => any 8516`},
	{"JavaScript: commander boolean and negatable", `-- Procfile --
web: node cli.js serve --no-public
-- package.json --
{"name":"gate","dependencies":{"commander":"^14"}}
-- cli.js --
const { program } = require('commander');
program
  .command('serve')
  .option('--port <n>', 'port', '8517')
  .option('--no-public', 'loopback only')
  .action(({ port, public: isPublic }) => {
    require('http').createServer((q, r) => r.end()).listen(Number(port), isPublic ? '0.0.0.0' : '127.0.0.1');
  });
program.parse(process.argv);
`, ` => loopback 8517`},
	{"JavaScript: yargs command handler and boolean", `-- Procfile --
web: node cli.js serve --public
-- package.json --
{"name":"gate","dependencies":{"yargs":"^17"}}
-- cli.js --
#!/usr/bin/env node
require('yargs')(process.argv.slice(2))
  .command('serve', 'start', (y) => y
    .option('port', { type: 'number', default: Number(process.env.PORT) || 8518 })
    .option('public', { type: 'boolean', default: false }),
  (argv) => {
    require('http').createServer((q, r) => r.end()).listen(argv.port, argv.public ? '0.0.0.0' : '127.0.0.1');
  })
  .demandCommand()
  .parse();
`, ` => any 8518
PORT=5123 => any 5123`},
	{"JavaScript: ipv6 and dual", `-- Procfile --
web: node server.js
-- package.json --
{"name":"sky"}
-- server.js --
const net = require('net');
const server = net.createServer((socket) => socket.end('tick\n'));
const v4 = process.env.FAMILY === '4';
server.listen({ port: 0x2150, host: v4 ? '127.0.0.1' : '::', ipv6Only: false });
`, ` => any 8528
FAMILY=4 => loopback 8528`},
	{"Python: match statement", `-- Procfile --
web: python3 gate.py
-- gate.py --
import os
import sys
from http.server import ThreadingHTTPServer, BaseHTTPRequestHandler


def address():
    match os.environ.get("STAGE", "dev"):
        case "live" | "prod":
            return "0.0.0.0", int(os.environ["PORT"])
        case "dev":
            return "127.0.0.1", 8531
        case other:
            sys.exit(f"unknown stage {other}")


if __name__ == "__main__":
    ThreadingHTTPServer(address(), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8531
STAGE=live PORT=5123 => any 5123
STAGE=odd => exits`},
	{"Python: settings with properties", `-- Procfile --
web: python3 -m sky
-- sky/__init__.py --

-- sky/config.py --
import os


class Config:
    def __init__(self, env=os.environ):
        self._env = env

    @property
    def addr(self):
        return self._env.get("SKY_ADDR", "0.0.0.0:8532")

    @property
    def host(self):
        return self.addr.split(":")[0]

    @property
    def port(self):
        parts = self.addr.split(":")
        return int(parts[1]) if len(parts) > 1 else 8533
-- sky/__main__.py --
from wsgiref.simple_server import make_server
from sky.config import Config


def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"sky"]


def main():
    cfg = Config()
    with make_server(cfg.host, cfg.port, app) as server:
        server.serve_forever()


main()
`, ` => any 8532
SKY_ADDR=127.0.0.1:5123 => loopback 5123
SKY_ADDR=0.0.0.0 => any 8533`},
	{"Python: argparse store_true and choices", `-- Procfile --
web: python3 app.py --public --port 8534
-- requirements.txt --
flask
-- app.py --
import argparse
import os
from flask import Flask

app = Flask(__name__)
parser = argparse.ArgumentParser()
parser.add_argument("--port", "-p", type=int, default=int(os.getenv("PORT", 8000)))
parser.add_argument("--public", action="store_true")
parser.add_argument("--log", choices=["info", "debug"], default="info")

if __name__ == "__main__":
    ns = parser.parse_args()
    app.run(host="0.0.0.0" if ns.public else "127.0.0.1", port=ns.port)
`, ` => any 8534
PORT=5123 => any 8534`},
	{"Python: click group with options on the group", `-- Procfile --
web: python3 -m gate --host 0.0.0.0 run
-- requirements.txt --
click
waitress
-- gate/__init__.py --

-- gate/__main__.py --
import click
import waitress


def application(environ, start_response):
    start_response("204 No Content", [])
    return []


@click.group()
@click.option("--host", default="127.0.0.1")
@click.option("--port", type=int, default=8535, envvar="GATE_PORT")
@click.pass_context
def cli(ctx, host, port):
    ctx.obj = {"host": host, "port": port}


@cli.command()
@click.pass_obj
def run(obj):
    waitress.serve(application, host=obj["host"], port=obj["port"])


cli()
`, ` => any 8535
GATE_PORT=5123 => any 5123`},
	{"Python: namedtuple and classmethod", `-- Procfile --
web: python3 server.py
-- server.py --
import os
import socket
from typing import NamedTuple


class Address(NamedTuple):
    host: str
    port: int

    @classmethod
    def from_env(cls, default_port=8536):
        return cls(os.getenv("HOST", ""), int(os.getenv("PORT", default_port)))


address = Address.from_env()
with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as s:
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    s.bind(address)
    s.listen(5)
    while True:
        conn, _ = s.accept()
        conn.close()
`, ` => any 8536
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 8536`},
	{"Python: env helper with type conversion", `-- Procfile --
web: python3 run.py
-- requirements.txt --
aiohttp
-- ticker/__init__.py --

-- ticker/env.py --
import os

TRUE = {"1", "true", "yes", "on"}


def get(name, default=None, cast=str):
    raw = os.environ.get("TICKER_" + name)
    if raw is None:
        return default
    if cast is bool:
        return raw.strip().lower() in TRUE
    return cast(raw)
-- run.py --
from aiohttp import web
from ticker import env

app = web.Application()
host = "0.0.0.0" if env.get("PUBLIC", False, bool) else "127.0.0.1"
web.run_app(app, host=host, port=env.get("PORT", 8537, int))
`, ` => loopback 8537
TICKER_PORT=5123 TICKER_PUBLIC=true => any 5123
TICKER_PORT=x => exits`},
	{"Python: toml with tomllib", `-- Procfile --
web: python3 main.py
-- pyproject.toml --
[project]
name = "dome"
version = "1"
dependencies = ["flask"]

[tool.dome.server]
host = "0.0.0.0"
port = 8538
-- main.py --
import os
import tomllib
from flask import Flask

with open("pyproject.toml", "rb") as fp:
    server = tomllib.load(fp)["tool"]["dome"]["server"]

app = Flask(__name__)
app.run(host=server["host"], port=int(os.environ.get("PORT", server["port"])))
`, ` => any 8538
PORT=5123 => any 5123`},
	{"Python: gunicorn with env file and wsgi factory", `-- Procfile --
web: gunicorn "sky:create_app()" --bind 0.0.0.0:${PORT:-8539} --workers 1
-- requirements.txt --
gunicorn
flask
-- sky/__init__.py --
from flask import Flask


def create_app():
    app = Flask(__name__)
    return app
`, ` => any 8539
PORT=5123 => any 5123`},
	{"Python: django asgi with uvicorn", `-- Procfile --
web: uvicorn observatory.asgi:application --host ${HOST:-127.0.0.1} --port ${PORT:-8542}
-- requirements.txt --
Django
uvicorn
-- manage.py --
import sys
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- observatory/__init__.py --

-- observatory/settings.py --
SECRET_KEY = "x"
ROOT_URLCONF = "observatory.urls"
-- observatory/urls.py --
urlpatterns = []
-- observatory/asgi.py --
import os
from django.core.asgi import get_asgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "observatory.settings")
application = get_asgi_application()
`, ` => loopback 8542
HOST=0.0.0.0 PORT=5123 => any 5123`},
	{"Python: uvicorn Config and Server", `-- Procfile --
web: python3 serve.py
-- requirements.txt --
uvicorn
-- serve.py --
import asyncio
import os
import uvicorn


async def app(scope, receive, send):
    assert scope["type"] == "http"
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": b"ok"})


async def main():
    config = uvicorn.Config(app, port=int(os.getenv("PORT") or 8543), host="0.0.0.0", log_level="info")
    server = uvicorn.Server(config)
    await server.serve()


if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 8543
PORT=5123 => any 5123`},
	{"Python: tornado http server with bind and start", `-- Procfile --
web: python3 t.py
-- requirements.txt --
tornado
-- t.py --
import os
import tornado.httpserver
import tornado.ioloop
import tornado.web

app = tornado.web.Application([])
server = tornado.httpserver.HTTPServer(app)
server.bind(int(os.environ.get("PORT", "8544")), os.environ.get("ADDRESS"))
server.start(1)
tornado.ioloop.IOLoop.current().start()
`, ` => any 8544
PORT=5123 => any 5123
ADDRESS=127.0.0.1 => loopback 8544`},
	{"Python: environment with os.environ update from json", `-- Procfile --
web: python3 a.py
-- requirements.txt --
bottle
-- defaults.json --
{"PORT": "8545", "HOST": "0.0.0.0"}
-- a.py --
import json
import os
import bottle

with open(os.path.join(os.path.dirname(__file__), "defaults.json")) as f:
    for key, value in json.load(f).items():
        os.environ.setdefault(key, value)

bottle.run(bottle.Bottle(), host=os.environ["HOST"], port=os.environ["PORT"])
`, ` => any 8545
PORT=5123 => any 5123`},
	{"Python: fastapi with lifespan and main args", `-- Procfile --
web: python3 -m app.main
-- requirements.txt --
fastapi
uvicorn
pydantic==1.10
-- app/__init__.py --

-- app/main.py --
from contextlib import asynccontextmanager
from functools import lru_cache
import uvicorn
from fastapi import FastAPI
from pydantic import BaseSettings, Field


class Settings(BaseSettings):
    host: str = "0.0.0.0"
    port: int = Field(8546, env="APP__PORT")


@lru_cache
def get_settings() -> Settings:
    return Settings()


def create_app() -> FastAPI:
    app = FastAPI()
    return app


def run() -> None:
    s = get_settings()
    uvicorn.run("app.main:create_app", factory=True, host=s.host, port=s.port)


if __name__ == "__main__":
    run()
`, ` => any 8546
APP__PORT=5123 => any 5123`},
	{"Python: simple http.server module", `-- Procfile --
web: python3 -m http.server ${PORT:-8547} --bind 127.0.0.1 --directory public
-- public/index.html --
<p>visitors
`, ` => loopback 8547
PORT=5123 => loopback 5123`},
	{"Deno: with parseArgs and file", `-- Procfile --
web: deno run --allow-net --allow-read --allow-env main.ts --host 127.0.0.1
-- deno.json --
{}
-- config.json --
{"port": 8581}
-- main.ts --
const config = JSON.parse(await Deno.readTextFile("./config.json"));
const i = Deno.args.indexOf("--host");
const hostname = i >= 0 ? Deno.args[i + 1] : "0.0.0.0";
const port = Number(Deno.env.get("PORT") || config.port);
Deno.serve({ hostname, port, onListen: () => console.log("up") }, () => new Response("ok"));
`, ` => loopback 8581
PORT=5123 => loopback 5123`},
	{"Bun: with routes and json import", `-- Procfile --
web: bun server.ts
-- package.json --
{"name":"sky"}
-- config.json --
{"port": 8582, "hostname": "127.0.0.1"}
-- server.ts --
import config from "./config.json";

const port = process.env.SKY_PORT ? Number(process.env.SKY_PORT) : config.port;
Bun.serve({ ...config, port, fetch: () => new Response("sky") });
`, ` => loopback 8582
PORT=5123 => loopback 8582
SKY_PORT=5124 => loopback 5124`},
	{"JavaScript: args by hand with while", `-- Procfile --
web: node server.js -p 8601 --bind=0.0.0.0
-- package.json --
{"name":"gate"}
-- args.js --
exports.parse = function parse(list) {
  const out = { _: [] };
  const queue = list.slice();
  while (queue.length) {
    const word = queue.shift();
    if (word.startsWith('--')) {
      const [key, ...rest] = word.slice(2).split('=');
      out[key] = rest.length ? rest.join('=') : queue.shift();
    } else if (word[0] === '-') {
      out[{ p: 'port', b: 'bind' }[word[1]] ?? word[1]] = queue.shift();
    } else out._.push(word);
  }
  return out;
};
-- server.js --
const { parse } = require('./args');
const opts = { port: process.env.PORT, bind: '127.0.0.1', ...parse(process.argv.slice(2)) };
require('http').createServer((q, r) => r.end()).listen(Number(opts.port), opts.bind);
`, ` => any 8601
PORT=5123 => any 8601`},
	{"JavaScript: layered config with deep merge", `-- Procfile --
web: node src/app.js
-- package.json --
{"name":"gate","type":"module"}
-- config/base.json --
{"http": {"host": "127.0.0.1", "port": 8602}, "log": {"level": "info"}}
-- config/production.json --
{"http": {"host": "0.0.0.0"}}
-- src/merge.js --
const isObject = (x) => x && typeof x === 'object' && !Array.isArray(x);
export function merge(target, ...sources) {
  for (const source of sources) {
    for (const [key, value] of Object.entries(source ?? {})) {
      if (isObject(value)) {
        target[key] = merge(isObject(target[key]) ? target[key] : {}, value);
      } else {
        target[key] = value;
      }
    }
  }
  return target;
}
-- src/env.js --
export function fromEnv(prefix, env) {
  const result = {};
  for (const [name, value] of Object.entries(env)) {
    if (!name.startsWith(prefix)) continue;
    const path = name.slice(prefix.length).toLowerCase().split('__');
    let node = result;
    for (const part of path.slice(0, -1)) node = node[part] ??= {};
    node[path.at(-1)] = /^\d+$/.test(value) ? Number(value) : value;
  }
  return result;
}
-- src/app.js --
import { readFileSync, existsSync } from 'node:fs';
import { join, dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createServer } from 'node:http';
import { merge } from './merge.js';
import { fromEnv } from './env.js';

const here = dirname(fileURLToPath(import.meta.url));
const load = (name) => {
  const file = join(here, '..', 'config', ` + "`" + `${name}.json` + "`" + `);
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {};
};
const config = merge({}, load('base'), load(process.env.NODE_ENV ?? 'development'), fromEnv('GATE_', process.env));
createServer((req, res) => res.end(config.log.level)).listen(config.http.port, config.http.host);
`, ` => loopback 8602
NODE_ENV=production => any 8602
NODE_ENV=production GATE_HTTP__PORT=5123 => any 5123`},
	{"JavaScript: events then listen", `-- Procfile --
web: node main.js
-- package.json --
{"name":"ticker"}
-- app.js --
const { EventEmitter } = require('events');
class App extends EventEmitter {
  constructor(env) { super(); this.env = env; }
  boot() {
    const port = Number(this.env.PORT) || 8604;
    setImmediate(() => this.emit('ready', { port }));
    return this;
  }
}
module.exports = App;
-- main.js --
const http = require('http');
const App = require('./app');
new App(process.env).boot().on('ready', ({ port }) => {
  http.createServer((q, r) => r.end()).listen(port, '127.0.0.1');
});
`, ` => loopback 8604
PORT=5123 => loopback 5123`},
	{"JavaScript: getters with proxies avoided", `-- Procfile --
web: node s.js
-- package.json --
{"name":"dome"}
-- s.js --
const http = require('http');
const domes = [
  { name: 'north', host: '0.0.0.0', get port() { return base + 1; } },
  { name: 'south', host: '127.0.0.1', get port() { return base + 2; } },
];
const base = 8604;
const wanted = (process.env.DOME || 'north').trim().toLowerCase();
const dome = domes.find(({ name }) => name === wanted);
if (!dome) {
  console.error(` + "`" + `no dome ${wanted}; there are ${domes.map((d) => d.name).join(', ')}` + "`" + `);
  process.exit(2);
}
http.createServer((q, r) => r.end(dome.name)).listen({ port: dome.port, host: dome.host });
`, ` => any 8605
DOME=south => loopback 8606
DOME=west => exits`},
	{"JavaScript: middleware chain for config", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate"}
-- s.js --
const pipe = (...fns) => (x) => fns.reduce((v, f) => f(v), x);
const withDefaults = (c) => ({ host: '::', port: 8606, ...c });
const withEnv = (env) => (c) => (env.PORT ? { ...c, port: Number.parseInt(env.PORT, 10) } : c);
const safe = (env) => (c) => (env.SAFE ? Object.assign({}, c, { host: '127.0.0.1' }) : c);
const config = pipe(withDefaults, withEnv(process.env), safe(process.env))({});
require('node:http').createServer((_, res) => res.end('ok')).listen(config);
`, ` => any 8606
PORT=5123 => any 5123
PORT=5123 SAFE=1 => loopback 5123`},
	{"JavaScript: fastify plugin options and after", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"sky","type":"module","dependencies":{"fastify":"^5"}}
-- s.mjs --
import Fastify from 'fastify';
import { once } from 'node:events';

const app = Fastify({ logger: false });
app.register(async (instance) => { instance.get('/', async () => 'sky'); });
app.decorate('config', { port: Number(process.env.PORT ?? 8609), host: process.env.ADDRESS ?? '0.0.0.0' });
app.ready((err) => {
  if (err) throw err;
  app.listen({ port: 1 + app.config.port - 1, host: app.config.host });
});
`, ` => any 8609
PORT=5123 => any 5123
ADDRESS=127.0.0.1 PORT=5123 => loopback 5123`},
	{"JavaScript: koa from a factory with default export", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"bookings","dependencies":{"koa":"^3"}}
-- src/server.js --
const Koa = require('koa');
const defaults = require('./defaults');
module.exports = (overrides = {}) => {
  const settings = Object.assign(Object.create(null), defaults, overrides);
  const app = new Koa();
  app.use((ctx) => { ctx.body = 'ok'; });
  return { settings, run: () => app.listen(settings.port, settings.host) };
};
-- src/defaults.js --
module.exports = { host: 'localhost', get port() { return process.env.PORT ? ~~process.env.PORT : 8610; } };
-- src/index.js --
const create = require('./server');
create(process.env.PORT ? { host: '0.0.0.0' } : undefined).run();
`, ` => loopback 8610
PORT=5123 => any 5123`},
	{"JavaScript: symbols and weak things", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate"}
-- s.js --
const registry = new WeakMap();
class Gate {
  constructor(port) { registry.set(this, { port }); }
  get port() { return registry.get(this).port; }
  listen() { return require('http').createServer().listen(this.port, '127.0.0.1'); }
}
const toPort = (v, d) => { const n = Number(v); return n > 0 && n < 65536 ? n : d; };
new Gate(toPort(process.env.PORT, 8611)).listen();
`, ` => loopback 8611
PORT=5123 => loopback 5123`},
	{"JavaScript: label and do while", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate"}
-- s.js --
let port;
outer: for (const prefix of ['PORT', 'GATE']) {
  let i = 0;
  do {
    const value = process.env[` + "`" + `${prefix}_${++i}` + "`" + `];
    if (value) { port = value; break outer; }
  } while (i < 3);
}
require('http').createServer().listen(port ?? 8612);
`, ` => any 8612
PORT_1=5123 => any 5123
PORT_2=5124 => any 5124`},
	{"JavaScript: dotenv style parser of own", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate"}
-- gate.conf --
# the gate
host = 0.0.0.0
port = 8613
-- s.js --
const fs = require('fs');
const settings = {};
for (const line of fs.readFileSync(__dirname + '/gate.conf', 'utf8').split(/\r?\n/)) {
  const m = line.match(/^\s*(\w+)\s*=\s*(.*?)\s*$/);
  if (m) settings[m[1]] = m[2];
}
require('http').createServer().listen(process.env.PORT || settings.port, settings.host);
`, ` => any 8613
PORT=5123 => any 5123`},
	{"Deno: class and top level await", `-- Procfile --
web: deno run -A main.ts
-- deno.json --
{}
-- main.ts --
interface Options { port: number; hostname: string }
class Config {
  static async load(): Promise<Options> {
    const port = Deno.env.get("PORT");
    return await Promise.resolve({ port: port ? parseInt(port) : 8614, hostname: "0.0.0.0" });
  }
}
const options = await Config.load();
Deno.serve(options, (_req: Request) => new Response("sky"));
`, ` => any 8614
PORT=5123 => any 5123`},
	{"Bun: elysia free routes", `-- Procfile --
web: bun run src/index.ts
-- package.json --
{"name":"gate"}
-- src/index.ts --
import { settings } from "./settings";
const server = Bun.serve({ port: settings.get("port") as number, hostname: settings.get("host") as string, fetch: () => new Response("gate") });
-- src/settings.ts --
const table: [string, string | number][] = [["host", "127.0.0.1"], ["port", Number(Bun.env.PORT ?? "8615")]];
export const settings = new Map<string, string | number>(table);
`, ` => loopback 8615
PORT=5123 => loopback 5123`},
	{"Python: args by hand", `-- Procfile --
web: python3 server.py --port 8621 --host=0.0.0.0
-- server.py --
import os
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler


def parse(argv):
    opts = {}
    it = list(argv)
    while it:
        word = it.pop(0)
        if not word.startswith("--"):
            raise SystemExit(f"what is {word}?")
        name, eq, value = word[2:].partition("=")
        opts[name] = value if eq else it.pop(0)
    return opts


opts = {"host": "127.0.0.1", "port": os.environ.get("PORT", "8000"), **parse(sys.argv[1:])}
HTTPServer((opts["host"], int(opts["port"])), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8621
PORT=5123 => any 8621`},
	{"Python: registry of settings with decorators", `-- Procfile --
web: python3 -m gate
-- requirements.txt --
waitress
-- gate/__init__.py --

-- gate/settings.py --
import os

_readers = {}


def setting(name, default):
    def wrap(func):
        def read():
            raw = os.environ.get(f"GATE_{name.upper()}")
            return func(raw) if raw is not None else default
        _readers[name] = read
        return read
    return wrap


@setting("port", 8622)
def port(value):
    return int(value)


@setting("host", "0.0.0.0")
def host(value):
    return value.strip()


def load():
    return {name: read() for name, read in _readers.items()}
-- gate/__main__.py --
from waitress import serve
from . import settings


def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]


serve(app, **settings.load())
`, ` => any 8622
GATE_PORT=5123 => any 5123
GATE_HOST=127.0.0.1 => loopback 8622`},
	{"Python: inheritance and super", `-- Procfile --
web: python3 main.py
-- main.py --
import os
from wsgiref.simple_server import make_server


class Base:
    host = "127.0.0.1"

    def __init__(self, port=8623):
        self.port = port

    def serve(self):
        make_server(self.host, self.port, lambda e, s: []).serve_forever()


class Live(Base):
    host = ""

    def __init__(self):
        super().__init__(port=int(os.environ["PORT"]))


servers = {"dev": Base, "live": Live}
servers[os.getenv("APP_ENV", "dev")]().serve()
`, ` => loopback 8623
APP_ENV=live PORT=5123 => any 5123
APP_ENV=live => exits`},
	{"Python: enum stages", `-- Procfile --
web: python3 main.py
-- requirements.txt --
bottle
-- main.py --
import os
from enum import Enum
from bottle import route, run


class Stage(Enum):
    DEV = "dev"
    PROD = "prod"

    @property
    def address(self):
        return {Stage.DEV: ("127.0.0.1", 8624), Stage.PROD: ("0.0.0.0", 8625)}[self]


@route("/")
def index():
    return "ok"


host, port = Stage(os.environ.get("STAGE", "dev")).address
run(host=host, port=port, quiet=True)
`, ` => loopback 8624
STAGE=prod => any 8625
STAGE=moon => exits`},
	{"Python: try except chain", `-- Procfile --
web: python3 s.py
-- s.py --
import os
import socketserver


def read_port():
    for name in ("APP_PORT", "PORT"):
        try:
            return int(os.environ[name])
        except KeyError:
            continue
        except ValueError as error:
            print(f"{name}: {error}")
    return 8626


with socketserver.TCPServer(("0.0.0.0", read_port()), socketserver.BaseRequestHandler) as server:
    server.serve_forever()
`, ` => any 8626
PORT=5123 => any 5123
PORT=abc => any 8626`},
	{"Python: context manager and yaml merge", `-- Procfile --
web: python3 run.py
-- requirements.txt --
pyyaml
aiohttp
-- conf/base.yml --
server: {host: 0.0.0.0, port: 8627}
-- conf/local.yml --
server: {host: 127.0.0.1}
-- run.py --
import os
from collections import ChainMap
from pathlib import Path
import yaml
from aiohttp import web

CONF = Path(__file__).parent / "conf"


def load(name):
    path = CONF / f"{name}.yml"
    if not path.exists():
        return {}
    with path.open() as fp:
        return yaml.safe_load(fp) or {}


def merge(a, b):
    out = dict(a)
    for k, v in b.items():
        out[k] = merge(out[k], v) if isinstance(v, dict) and isinstance(out.get(k), dict) else v
    return out


cfg = merge(load("base"), load(os.environ.get("CONF", "local")))
server = cfg["server"]
web.run_app(web.Application(), host=server["host"], port=int(os.getenv("PORT", server["port"])))
`, ` => loopback 8627
PORT=5123 => loopback 5123`},
	{"Python: async main with config object", `-- Procfile --
web: python3 s.py
-- s.py --
import asyncio
import os
from dataclasses import dataclass


@dataclass
class Address:
    host: str
    port: int

    @staticmethod
    def parse(text: str) -> "Address":
        head, sep, tail = text.rpartition(":")
        return Address(head if sep else "0.0.0.0", int(tail))


async def handle(reader, writer):
    writer.close()


async def main() -> None:
    address = Address.parse(os.environ.get("LISTEN", "8628"))
    server = await asyncio.start_server(handle, address.host, address.port)
    async with server:
        await server.serve_forever()


if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 8628
LISTEN=127.0.0.1:5123 => loopback 5123
LISTEN=5124 => any 5124`},
	{"Python: flask app factory with config mapping", `-- Procfile --
web: python3 wsgi.py
-- requirements.txt --
flask
-- bookings/__init__.py --
import os
from flask import Flask

DEFAULTS = {"HOST": "127.0.0.1", "PORT": 8629}
PRODUCTION = {**DEFAULTS, "HOST": "0.0.0.0"}


def create_app(overrides=None):
    app = Flask(__name__)
    app.config.from_mapping(PRODUCTION if os.environ.get("BOOKINGS_ENV") == "production" else DEFAULTS)
    app.config.update(overrides or {})

    @app.get("/")
    def index():
        return "ok"

    return app
-- wsgi.py --
import os
from bookings import create_app

port = os.environ.get("BOOKINGS_PORT")
app = create_app({"PORT": int(port)} if port else None)

if __name__ == "__main__":
    app.run(app.config["HOST"], app.config["PORT"])
`, ` => loopback 8629
BOOKINGS_PORT=5123 => loopback 5123
BOOKINGS_ENV=production => any 8629`},
	{"Python: global state and functions", `-- Procfile --
web: python3 s.py
-- s.py --
import os
from http.server import ThreadingHTTPServer, SimpleHTTPRequestHandler

HOST, PORT = "127.0.0.1", 8630


def truthy(value):
    return str(value).lower() in {"1", "on", "true", "yes"}


def configure(env):
    global HOST, PORT
    if truthy(env.get("PUBLIC", "off")):
        HOST = "0.0.0.0"
    PORT = int(env.get("PORT") or PORT)


configure(os.environ)
ThreadingHTTPServer((HOST, PORT), SimpleHTTPRequestHandler).serve_forever()
`, ` => loopback 8630
PORT=5123 PUBLIC=on => any 5123`},
	{"Python: itertools and sorted", `-- Procfile --
web: python3 s.py
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

raw = os.environ.get("SKY_PORTS", "8631")
ports = sorted({int(p) for p in raw.split(",") if p.strip().isdigit()})
lowest, *rest = ports
HTTPServer(("127.0.0.1" if rest else "", lowest), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8631
SKY_PORTS=8632,5123 => loopback 5123`},
	{"Python: tornado with argparse subcommands", `-- Procfile --
web: python3 gate.py serve --port 8633
-- requirements.txt --
tornado
-- gate.py --
import argparse
import os
import tornado.ioloop
import tornado.web


def serve(args):
    app = tornado.web.Application([])
    app.listen(args.port, address=args.host)
    tornado.ioloop.IOLoop.current().start()


def version(args):
    print("1.0")


def main():
    parser = argparse.ArgumentParser(prog="gate")
    sub = parser.add_subparsers(dest="command", required=True)
    s = sub.add_parser("serve")
    s.add_argument("--port", type=int, default=8000)
    s.add_argument("--host", default=os.environ.get("HOST", "0.0.0.0"))
    s.set_defaults(func=serve)
    v = sub.add_parser("version")
    v.set_defaults(func=version)
    args = parser.parse_args()
    args.func(args)


if __name__ == "__main__":
    main()
`, ` => any 8633
HOST=127.0.0.1 => loopback 8633`},
	{"Python: own env file reader", `-- Procfile --
web: python3 s.py
-- settings.env --
HOST=0.0.0.0
PORT=8634
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler


def load_env(path):
    with open(path, encoding="utf-8") as fp:
        for line in fp:
            line = line.strip()
            if not line or line.startswith("#"):
                continue
            key, _, value = line.partition("=")
            os.environ.setdefault(key.strip(), value.strip().strip('"'))


load_env(os.path.join(os.path.dirname(os.path.abspath(__file__)), "settings.env"))
HTTPServer((os.environ["HOST"], int(os.environ["PORT"])), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8634
PORT=5123 => any 5123`},
	{"Python: uvicorn with partial kwargs", `-- Procfile --
web: python3 -m sky.cli run
-- requirements.txt --
uvicorn
click
-- sky/__init__.py --

-- sky/cli.py --
import functools
import os
import click
import uvicorn


async def app(scope, receive, send):
    pass


start = functools.partial(uvicorn.run, app, log_level="warning")


@click.command()
@click.argument("what", type=click.Choice(["run", "check"]))
@click.option("--port", envvar="SKY_PORT", default=8635, type=int)
def main(what, port):
    if what == "run":
        start(host="0.0.0.0", port=port)


if __name__ == "__main__":
    main()
`, ` => any 8635
SKY_PORT=5123 => any 5123`},
	{"Go: args by hand", `-- Procfile --
web: ./gate --port=8701 --public
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
	"strings"
)

func main() {
	port, host := os.Getenv("PORT"), "127.0.0.1"
	for _, arg := range os.Args[1:] {
		switch {
		case strings.HasPrefix(arg, "--port="):
			port = strings.TrimPrefix(arg, "--port=")
		case arg == "--public":
			host = "0.0.0.0"
		default:
			log.Fatalf("unknown argument %s", arg)
		}
	}
	if port == "" {
		port = "8000"
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%s", host, port), nil))
}
`, ` => any 8701
PORT=5123 => any 8701`},
	{"Go: builder", `-- Procfile --
web: ./sky
-- go.mod --
module sky

go 1.24
-- server.go --
package main

import (
	"net"
	"net/http"
	"strconv"
)

type Builder struct {
	host    string
	port    int
	handler http.Handler
}

func NewBuilder() *Builder { return &Builder{port: 8702} }

func (b *Builder) Host(h string) *Builder {
	if h != "" {
		b.host = h
	}
	return b
}

func (b *Builder) Port(p string) *Builder {
	if n, err := strconv.Atoi(p); err == nil {
		b.port = n
	}
	return b
}

func (b *Builder) Build() *http.Server {
	return &http.Server{Addr: net.JoinHostPort(b.host, strconv.Itoa(b.port)), Handler: b.handler}
}
-- main.go --
package main

import (
	"log"
	"os"
)

func main() {
	srv := NewBuilder().Host(os.Getenv("HOST")).Port(os.Getenv("PORT")).Build()
	log.Fatal(srv.ListenAndServe())
}
`, ` => any 8702
PORT=5123 => any 5123`},
	{"Go: slice of lookups", `-- Procfile --
web: ./ticker
-- go.mod --
module ticker

go 1.24
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"strconv"
)

var names = []string{"APP_PORT", "PORT"}

func port() int {
	for _, n := range names {
		v, ok := os.LookupEnv(n)
		if !ok {
			continue
		}
		p, err := strconv.Atoi(v)
		if err != nil || p < 1 || p > 65535 {
			continue
		}
		return p
	}
	return 8703
}

func main() {
	addr := ":" + strconv.Itoa(port())
	if err := http.ListenAndServe(addr, nil); err != nil {
		log.Fatal(err)
	}
}
`, ` => any 8703
APP_PORT=5123 => any 5123
APP_PORT=x PORT=5124 => any 5124`},
	{"Go: embedded struct and method values", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"net/http"
	"os"
)

type base struct{ host string }

func (b base) addr(port string) string { return b.host + ":" + port }

type dev struct{ base }
type prod struct {
	base
	port string
}

type config interface{ listen() string }

func (d dev) listen() string  { return d.addr("8704") }
func (p prod) listen() string { return p.addr(p.port) }

func load(env string) config {
	if env == "prod" {
		return prod{base{"0.0.0.0"}, os.Getenv("PORT")}
	}
	return dev{base{"127.0.0.1"}}
}

func main() {
	serve := http.ListenAndServe
	if err := serve(load(os.Getenv("GATE_ENV")).listen(), nil); err != nil {
		panic(err)
	}
}
`, ` => loopback 8704
GATE_ENV=prod PORT=5123 => any 5123`},
	{"Go: sync once and globals", `-- Procfile --
web: ./map
-- go.mod --
module map

go 1.24
-- config/config.go --
package config

import (
	"os"
	"sync"
)

type Config struct{ Port, Host string }

var (
	once   sync.Once
	config *Config
)

func Get() *Config {
	once.Do(func() {
		config = &Config{Port: "8705", Host: "0.0.0.0"}
		if p := os.Getenv("PORT"); p != "" {
			config.Port = p
		}
	})
	return config
}
-- main.go --
package main

import (
	"log"
	"net/http"

	"map/config"
)

func main() {
	c := config.Get()
	log.Fatal(http.ListenAndServe(c.Host+":"+c.Port, nil))
}
`, ` => any 8705
PORT=5123 => any 5123`},
	{"Go: url parse", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"net/url"
	"os"
)

func main() {
	raw, ok := os.LookupEnv("GATE_URL")
	if !ok {
		raw = "http://localhost:8707/"
	}
	u, err := url.Parse(raw)
	if err != nil {
		log.Fatal(err)
	}
	port := u.Port()
	if port == "" {
		port = "8080"
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(u.Hostname(), port), nil))
}
`, ` => loopback 8707
GATE_URL=http://127.0.0.1:5123 => loopback 5123
GATE_URL=http://0.0.0.0 => any 8080`},
	{"Go: text file settings", `-- Procfile --
web: ./dome -f dome.conf
-- go.mod --
module dome

go 1.24
-- dome.conf --
# dome
host 0.0.0.0
port 8708
-- main.go --
package main

import (
	"bufio"
	"flag"
	"log"
	"net/http"
	"os"
	"strings"
)

func read(path string) map[string]string {
	f, err := os.Open(path)
	if err != nil {
		log.Fatal(err)
	}
	defer f.Close()
	m := map[string]string{}
	sc := bufio.NewScanner(f)
	for sc.Scan() {
		line := strings.TrimSpace(sc.Text())
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		k, v, _ := strings.Cut(line, " ")
		m[k] = v
	}
	return m
}

func main() {
	path := flag.String("f", "", "settings")
	flag.Parse()
	m := read(*path)
	if p := os.Getenv("DOME_PORT"); p != "" {
		m["port"] = p
	}
	log.Fatal(http.ListenAndServe(m["host"]+":"+m["port"], nil))
}
`, ` => any 8708
DOME_PORT=5123 => any 5123`},
	{"JavaScript: express with http errors and class routes", `-- Procfile --
web: npm start
-- package.json --
{"name":"bookings","scripts":{"start":"node ./src/server.js"},"dependencies":{"express":"^5","cors":"^2"}}
-- src/config/environment.js --
const path = require('path');

class Environment {
  constructor() {
    this.nodeEnv = process.env.NODE_ENV || 'development';
    this.port = this.#number('PORT', 8801);
    this.host = this.#string('HOST', this.isProduction ? '0.0.0.0' : '127.0.0.1');
    this.root = path.resolve(__dirname, '..');
  }
  get isProduction() { return this.nodeEnv === 'production'; }
  #string(name, fallback) {
    const value = process.env[name];
    return value === undefined || value === '' ? fallback : value;
  }
  #number(name, fallback) {
    const n = Number(this.#string(name, fallback));
    if (!Number.isFinite(n)) throw new TypeError(` + "`" + `${name} is not a number` + "`" + `);
    return n;
  }
}
module.exports = new Environment();
-- src/app.js --
const express = require('express');
const cors = require('cors');
module.exports = function makeApp() {
  const app = express();
  app.use(cors());
  app.get('/', (req, res) => res.json({ ok: true }));
  app.use((err, req, res, next) => res.status(500).end());
  return app;
};
-- src/server.js --
const makeApp = require('./app');
const env = require('./config/environment');
const server = makeApp().listen(env.port, env.host, () => {
  const { address, port } = server.address();
  console.log(` + "`" + `listening on ${address}:${port}` + "`" + `);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.close(() => process.exit(0)));
`, ` => loopback 8801
PORT=5123 => loopback 5123
NODE_ENV=production HOST=0.0.0.0 => any 8801`},
	{"JavaScript: yaml config with env interpolation", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"sky","type":"module","dependencies":{"js-yaml":"^4"}}
-- config.yaml --
server:
  port: ${PORT:-8802}
  host: 0.0.0.0
-- index.mjs --
import fs from 'node:fs';
import http from 'node:http';
import yaml from 'js-yaml';

const text = fs.readFileSync(new URL('./config.yaml', import.meta.url), 'utf8')
  .replace(/\$\{(\w+)(?::-([^}]*))?\}/g, (_, name, fallback = '') => process.env[name] ?? fallback);
const { server } = yaml.load(text);
http.createServer((req, res) => res.end('sky')).listen(server.port, server.host);
`, ` => any 8802
PORT=5123 => any 5123`},
	{"JavaScript: a condition that nothing tells", `-- Procfile --
web: node server.js
-- server.js --
const http = require('http');
const os = require('os');
if (os.totalmem() > 1000) {
  http.createServer((q, s) => s.end()).listen(process.env.PORT || 8080);
}
`, ` => unknown
PORT=5123 => unknown`},
	{"JavaScript: its twin, which the environment decides", `-- Procfile --
web: node server.js
-- server.js --
const http = require('http');
if (process.env.GATE !== 'shut') {
  http.createServer((q, s) => s.end()).listen(process.env.PORT || 8080);
}
`, ` => any 8080
PORT=5123 => any 5123
GATE=shut => skipped`},
	{"Python: what the command sets is not known", `-- Procfile --
web: PORT=$(cat port.txt) python3 serve.py
-- serve.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler

def port():
    for name in ("GATE_PORT", "PORT"):
        if name in os.environ:
            return int(os.environ[name])
    return 8000

HTTPServer(("", port()), SimpleHTTPRequestHandler).serve_forever()
`, ` => unknown
GATE_PORT=5123 => any 5123`},
	{"JavaScript: socket.io on one http server", `-- Procfile --
web: node server.js
-- package.json --
{"name":"ticker","dependencies":{"socket.io":"^4"}}
-- server.js --
const { createServer } = require('http');
const { Server } = require('socket.io');
const httpServer = createServer();
const io = new Server(httpServer, { cors: { origin: '*' } });
io.on('connection', (socket) => socket.emit('tick'));
const PORT = parseInt(process.env.PORT ?? '8803', 10);
httpServer.listen(PORT, '0.0.0.0');
`, ` => any 8803
PORT=5123 => any 5123`},
	{"TypeScript: hono with env adapter", `-- Procfile --
web: tsx src/index.ts
-- package.json --
{"name":"map","type":"module","dependencies":{"hono":"^4","@hono/node-server":"^2","tsx":"*"}}
-- src/lib/result.ts --
export type Result<T> = { ok: true; value: T } | { ok: false; error: string };
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const fail = (error: string): Result<never> => ({ ok: false, error });
-- src/lib/port.ts --
import { ok, fail, type Result } from './result';
export function readPort(raw: string | undefined, fallback: number): Result<number> {
  if (raw === undefined) return ok(fallback);
  const value = Number(raw);
  return Number.isInteger(value) && value >= 0 && value <= 65535 ? ok(value) : fail(` + "`" + `bad port ${raw}` + "`" + `);
}
-- src/index.ts --
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { readPort } from './lib/port';

const app = new Hono().get('/', (c) => c.text('map'));
const port = readPort(process.env.PORT, 8804);
if (!port.ok) {
  console.error(port.error);
  process.exit(78);
}
serve({ ...app, port: port.value, hostname: '127.0.0.1' } as any, (info) => console.log(info.port));
`, ` => loopback 8804
PORT=5123 => loopback 5123
PORT=nope => exits`},
	{"JavaScript: fastify with env schema by hand", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"fastify":"^5"}}
-- server.js --
'use strict';
const schema = {
  port: { type: 'integer', default: 8805 },
  address: { type: 'string', default: '::' },
};
const coerce = { integer: (v) => parseInt(v, 10), string: String };
function load(prefix) {
  return Object.keys(schema).reduce((acc, key) => {
    const raw = process.env[` + "`" + `${prefix}_${key.toUpperCase()}` + "`" + `];
    acc[key] = raw === undefined ? schema[key].default : coerce[schema[key].type](raw);
    return acc;
  }, {});
}
const { port, address: host } = load('FASTIFY');
const app = require('fastify')();
app.get('/', async () => 'ok');
app.listen({ port, host }).then((where) => console.log(where), (err) => { app.log.error(err); process.exit(1); });
`, ` => any 8805
FASTIFY_PORT=5123 FASTIFY_ADDRESS=127.0.0.1 => loopback 5123`},
	{"JavaScript: restify with bunyan free logs", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate","dependencies":{"polka":"*"}}
-- s.js --
const polka = require('polka');
const { PORT = 8807, HOST = '0.0.0.0' } = process.env;
const app = polka();
app.get('/health', (req, res) => res.end('ok'));
app.listen({ port: +PORT, host: HOST }, (err) => { if (err) throw err; });
`, ` => any 8807
PORT=5123 => any 5123`},
	{"JavaScript: ports from os and arithmetic", `-- Procfile --
web: node s.js
-- package.json --
{"name":"gate"}
-- s.js --
const id = Number((process.env.INSTANCE || '0').split('.').pop());
const port = 8800 + (Number.isNaN(id) ? 0 : id) % 10 + (1 << 3);
require('http').createServer().listen(port, ['127.0.0.1', '0.0.0.0'][id & 1]);
`, `INSTANCE=3 => any 8811
INSTANCE=web.2 => loopback 8810
 => loopback 8808`},
	{"Deno: oak free router", `-- Procfile --
web: deno run --allow-net --allow-env --allow-read src/main.ts
-- deno.json --
{"imports":{}}
-- src/config.ts --
const defaults = { SKY_HOST: "0.0.0.0", SKY_PORT: "8808" } as const;
type Key = keyof typeof defaults;
export const get = (key: Key): string => Deno.env.get(key) ?? defaults[key];
-- src/main.ts --
import { get } from "./config.ts";
const listener = Deno.listen({ hostname: get("SKY_HOST"), port: parseInt(get("SKY_PORT")) });
for await (const conn of listener) conn.close();
`, ` => any 8808
SKY_PORT=5123 => any 5123`},
	{"Bun: hono export", `-- Procfile --
web: bun run start
-- package.json --
{"name":"map","scripts":{"start":"bun run src/index.ts"},"dependencies":{"hono":"^4"}}
-- src/index.ts --
import { Hono } from "hono";
const app = new Hono();
app.get("/", (c) => c.text("map"));
export default { port: Number(process.env.PORT) || 8809, hostname: process.env.HOSTNAME_X ? "127.0.0.1" : "0.0.0.0", fetch: app.fetch };
`, ` => any 8809
PORT=5123 => any 5123
PORT=5123 HOSTNAME_X=1 => loopback 5123`},
	{"Python: settings metaclass free singleton", `-- Procfile --
web: python3 -m app
-- requirements.txt --
flask
waitress
-- app/__init__.py --
from .settings import Settings

settings = Settings.instance()
-- app/settings.py --
import os


class Settings:
    _instance = None
    _spec = (("host", str, "0.0.0.0"), ("port", int, 8811))

    @classmethod
    def instance(cls):
        if cls._instance is None:
            cls._instance = cls()
        return cls._instance

    def __init__(self):
        for name, kind, default in self._spec:
            raw = os.environ.get("APP_" + name.upper())
            setattr(self, name, kind(raw) if raw else default)

    def __repr__(self):
        return f"<Settings {self.host}:{self.port}>"
-- app/__main__.py --
from flask import Flask
from waitress import serve
from app import settings

application = Flask("app")


@application.route("/")
def index():
    return repr(settings)


if __name__ == "__main__":
    serve(application, listen="%s:%d" % (settings.host, settings.port))
`, ` => any 8811
APP_PORT=5123 => any 5123
APP_HOST=127.0.0.1 APP_PORT=5123 => loopback 5123`},
	{"Python: aiohttp factory and app keys", `-- Procfile --
web: python3 main.py --config conf/live.toml
-- requirements.txt --
aiohttp
-- conf/live.toml --
[http]
host = "0.0.0.0"
port = 8812
-- main.py --
import argparse
import os
import pathlib
import tomllib
from aiohttp import web


def read(path: pathlib.Path) -> dict:
    return tomllib.loads(path.read_text())


async def init(conf) -> web.Application:
    app = web.Application()
    app["conf"] = conf
    return app


def main() -> None:
    ap = argparse.ArgumentParser()
    ap.add_argument("-c", "--config", type=pathlib.Path, required=True)
    conf = read(ap.parse_args().config)["http"]
    if port := os.getenv("GATE_PORT"):
        conf |= {"port": int(port)}
    web.run_app(init(conf), host=conf["host"], port=conf["port"])


main()
`, ` => any 8812
GATE_PORT=5123 => any 5123`},
	{"Python: gunicorn from python", `-- Procfile --
web: python3 run.py
-- requirements.txt --
gunicorn
-- run.py --
import os
from gunicorn.app.base import BaseApplication


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]


class Server(BaseApplication):
    def __init__(self, application, **options):
        self.options = options
        self.application = application
        super().__init__()

    def load_config(self):
        for key, value in self.options.items():
            self.cfg.set(key, value)

    def load(self):
        return self.application


Server(app, bind=f"0.0.0.0:{os.environ.get('PORT', 8813)}", workers=1).run()
`, ` => any 8813
PORT=5123 => any 5123`},
	{"Python: sockets by hand", `-- Procfile --
web: python3 s.py
-- s.py --
import os
import selectors
import socket

port = int(os.environ.get("PORT", "8814"))
v6 = os.environ.get("FAMILY") == "6"
sock = socket.socket(socket.AF_INET6 if v6 else socket.AF_INET, socket.SOCK_STREAM)
sock.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
sock.bind(("::1" if v6 else "0.0.0.0", port))
sock.listen(128)
sel = selectors.DefaultSelector()
sel.register(sock, selectors.EVENT_READ)
while True:
    for key, _ in sel.select():
        c, addr = key.fileobj.accept()
        c.close()
`, ` => any 8814
PORT=5123 => any 5123
FAMILY=6 => loopback 8814`},
	{"Python: starlette with config", `-- Procfile --
web: python3 app.py
-- requirements.txt --
starlette
uvicorn
-- app.py --
import uvicorn
from starlette.applications import Starlette
from starlette.config import Config
from starlette.responses import PlainTextResponse
from starlette.routing import Route

config = Config()
HOST = config("HOST", default="127.0.0.1")
PORT = config("PORT", cast=int, default=8815)

app = Starlette(routes=[Route("/", lambda request: PlainTextResponse("ok"))])

if __name__ == "__main__":
    uvicorn.run(app, host=HOST, port=PORT)
`, ` => loopback 8815
PORT=5123 => loopback 5123
PORT=abc => exits`},
	{"Python: typer app with callback", `-- Procfile --
web: python3 cli.py serve --public
-- requirements.txt --
typer
-- cli.py --
from http.server import HTTPServer, BaseHTTPRequestHandler
import typer

app = typer.Typer()


@app.command()
def version():
    print("1")


@app.command()
def serve(port: int = typer.Option(8817, envvar="PORT"), public: bool = False):
    HTTPServer(("0.0.0.0" if public else "127.0.0.1", port), BaseHTTPRequestHandler).serve_forever()


if __name__ == "__main__":
    app()
`, ` => any 8817
PORT=5123 => any 5123`},
	{"Go: config with validation and wrapped errors", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- internal/conf/conf.go --
package conf

import (
	"errors"
	"fmt"
	"os"
	"strconv"
	"strings"
)

var ErrRange = errors.New("out of range")

type Conf struct {
	Host string
	Port uint16
}

type field struct {
	name string
	set  func(*Conf, string) error
}

var table = []field{
	{"HOST", func(c *Conf, v string) error { c.Host = v; return nil }},
	{"PORT", func(c *Conf, v string) error {
		n, err := strconv.ParseUint(v, 10, 16)
		if err != nil {
			return err
		}
		if n == 0 {
			return ErrRange
		}
		c.Port = uint16(n)
		return nil
	}},
}

func Load(prefix string) (Conf, error) {
	c := Conf{Host: "127.0.0.1", Port: 8821}
	var errs []error
	for _, f := range table {
		name := strings.ToUpper(prefix) + "_" + f.name
		v, ok := os.LookupEnv(name)
		if !ok {
			continue
		}
		if err := f.set(&c, v); err != nil {
			errs = append(errs, fmt.Errorf("%s: %w", name, err))
		}
	}
	if len(errs) > 0 {
		return c, errors.Join(errs...)
	}
	return c, nil
}
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"

	"gate/internal/conf"
)

func main() {
	c, err := conf.Load("gate")
	if err != nil {
		log.Fatal(err)
	}
	if err := http.ListenAndServe(fmt.Sprintf("%s:%d", c.Host, c.Port), nil); err != nil {
		log.Fatal(err)
	}
}
`, ` => loopback 8821
GATE_PORT=5123 => loopback 5123
GATE_PORT=0 => exits`},
	{"Go: run function with getenv injected", `-- Procfile --
web: ./sky
-- go.mod --
module sky

go 1.24
-- main.go --
package main

import (
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/signal"
	"sync"
	"time"
)

func run(ctx context.Context, args []string, getenv func(string) string, stdout io.Writer) error {
	ctx, cancel := signal.NotifyContext(ctx, os.Interrupt)
	defer cancel()
	port := getenv("PORT")
	if port == "" {
		port = "8822"
	}
	httpServer := &http.Server{
		Addr:    net.JoinHostPort(getenv("HOST"), port),
		Handler: newServer(),
	}
	go func() {
		fmt.Fprintf(stdout, "listening on %s\n", httpServer.Addr)
		if err := httpServer.ListenAndServe(); err != nil && err != http.ErrServerClosed {
			fmt.Fprintf(os.Stderr, "error listening and serving: %s\n", err)
		}
	}()
	var wg sync.WaitGroup
	wg.Add(1)
	go func() {
		defer wg.Done()
		<-ctx.Done()
		shutdownCtx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
		defer cancel()
		httpServer.Shutdown(shutdownCtx)
	}()
	wg.Wait()
	return nil
}

func newServer() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("/", func(w http.ResponseWriter, r *http.Request) {})
	return mux
}

func main() {
	if err := run(context.Background(), os.Args, os.Getenv, os.Stdout); err != nil {
		fmt.Fprintf(os.Stderr, "%s\n", err)
		os.Exit(1)
	}
}
`, ` => any 8822
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 8822`},
	{"Go: generics and options struct", `-- Procfile --
web: ./map -public
-- go.mod --
module map

go 1.24
-- main.go --
package main

import (
	"flag"
	"fmt"
	"log"
	"net/http"
	"os"
	"strconv"
)

type parser[T any] func(string) (T, error)

func env[T any](name string, def T, p parser[T]) T {
	raw, ok := os.LookupEnv(name)
	if !ok {
		return def
	}
	v, err := p(raw)
	if err != nil {
		log.Printf("%s: %v", name, err)
		return def
	}
	return v
}

type options struct {
	public bool
	port   int
}

func (o *options) host() string {
	if o.public {
		return ""
	}
	return "localhost"
}

func main() {
	var o options
	flag.BoolVar(&o.public, "public", false, "all interfaces")
	flag.IntVar(&o.port, "port", env("MAP_PORT", 8823, strconv.Atoi), "port")
	flag.Parse()
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", o.host(), o.port), nil))
}
`, ` => any 8823
MAP_PORT=5123 => any 5123`},
}

func TestTraced(t *testing.T) {
	t.Parallel()
	for _, c := range traced {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
