package check_test

import "testing"

// settled are programs that read what they need through libraries of settings, or in
// ways that were not followed at first: what each did was read from the kernel.
var settled = []told{
	{"ws on http server with noServer", `-- Procfile --
web: node index.js
-- package.json --
{"name":"a","dependencies":{"ws":"^8"}}
-- index.js --
const { createServer } = require('http');
const { WebSocketServer } = require('ws');
const server = createServer((q, r) => r.writeHead(426).end());
const wss = new WebSocketServer({ noServer: true });
server.on('upgrade', (req, socket, head) => wss.handleUpgrade(req, socket, head, (ws) => wss.emit('connection', ws, req)));
wss.on('connection', (ws) => ws.send('hello'));
server.listen({ port: ~~process.env.WS_PORT || 8206, host: '0.0.0.0', exclusive: true });
`, ` => any 8206
WS_PORT=8106 => any 8106`},
	{"nest with global prefix and config factory", `-- Procfile --
web: tsx src/main.ts
-- package.json --
{"name":"a","dependencies":{"@nestjs/common":"^10","@nestjs/core":"^10","@nestjs/platform-express":"^10","@nestjs/config":"^3","reflect-metadata":"^0.2","rxjs":"^7"},"devDependencies":{"tsx":"^4","typescript":"^5"}}
-- tsconfig.json --
{"compilerOptions":{"experimentalDecorators":true,"emitDecoratorMetadata":true,"target":"ES2022","module":"commonjs"}}
-- src/main.ts --
import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { ConfigService } from '@nestjs/config';
import { Logger } from '@nestjs/common';
import { AppModule } from './app.module';

async function bootstrap(): Promise<void> {
  const app = await NestFactory.create(AppModule, { logger: ['error'] });
  app.setGlobalPrefix('api');
  app.enableShutdownHooks();
  const config = app.get(ConfigService);
  const { port, host } = config.getOrThrow<{ port: number; host: string }>('http');
  await app.listen(port, host);
  Logger.log(` + "`" + `up ${await app.getUrl()}` + "`" + `);
}
void bootstrap();
-- src/app.module.ts --
import { Module } from '@nestjs/common';
import { ConfigModule } from '@nestjs/config';
import http from './http.config';
@Module({ imports: [ConfigModule.forRoot({ isGlobal: true, load: [http] })] })
export class AppModule {}
-- src/http.config.ts --
import { registerAs } from '@nestjs/config';
export default registerAs('http', () => ({ port: parseInt(process.env.PORT ?? '8207', 10), host: process.env.HOST ?? '0.0.0.0' }));
`, ` => any 8207
PORT=8107 => any 8107
PORT=8107 HOST=127.0.0.1 => loopback 8107`},
	{"flask with from_prefixed_env", `-- Procfile --
web: python3 run.py
-- requirements.txt --
flask==2.2.2
-- run.py --
from nightlog import create_app

app = create_app()

if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"])
-- nightlog/__init__.py --
from flask import Flask


def create_app():
    app = Flask(__name__)
    app.config.from_mapping(HOST="127.0.0.1", PORT=8221)
    app.config.from_prefixed_env()
    from . import views
    app.register_blueprint(views.bp)
    return app
-- nightlog/views.py --
from flask import Blueprint

bp = Blueprint("views", __name__)


@bp.get("/")
def index():
    return "nights"
`, ` => loopback 8221
FLASK_PORT=8121 => loopback 8121
FLASK_PORT=8121 FLASK_HOST=0.0.0.0 => any 8121`},
	{"chi and flag with env override in visit", `-- Procfile --
web: ./app -addr 0.0.0.0:8242
-- go.mod --
module a

go 1.26
-- main.go --
package main

import (
	"flag"
	"log"
	"net/http"
	"os"
	"strings"
)

func main() {
	fs := flag.NewFlagSet("app", flag.ExitOnError)
	addr := fs.String("addr", "localhost:8342", "address")
	_ = fs.Bool("v", false, "talk")
	_ = fs.Parse(os.Args[1:])
	fs.VisitAll(func(f *flag.Flag) {
		if v := os.Getenv(strings.ToUpper(f.Name)); v != "" {
			_ = fs.Set(f.Name, v)
		}
	})
	log.Fatal(http.ListenAndServe(*addr, nil))
}
`, ` => any 8242
ADDR=:8142 => any 8142`},
	{"zod with coerce and safeParse", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"zod":"^3"}}
-- index.mjs --
import { z } from 'zod';
import http from 'node:http';
const Env = z.object({
  PORT: z.coerce.number().int().min(1024).max(65535).default(8402),
  HOST: z.string().trim().min(1).optional(),
  MODE: z.enum(['edge', 'inner']).catch('edge'),
}).transform((e) => ({ port: e.PORT, host: e.HOST ?? (e.MODE === 'edge' ? '0.0.0.0' : '127.0.0.1') }));
const r = Env.safeParse(process.env);
if (!r.success) {
  console.error(r.error.flatten().fieldErrors);
  process.exit(1);
}
http.createServer((_, res) => res.end('x')).listen(r.data);
`, ` => any 8402
PORT=8302 => any 8302
PORT=eighty => exits`},
	{"convict with validate and env format", `-- Procfile --
web: node index.js
-- package.json --
{"name":"a","dependencies":{"convict":"^6"}}
-- settings/development.json --
{"http":{"host":"127.0.0.1"}}
-- index.js --
const convict = require('convict');
const config = convict({
  env: { format: ['production', 'development'], default: 'development', env: 'NODE_ENV' },
  http: {
    host: { doc: 'address', format: String, default: '0.0.0.0', env: 'HTTP_HOST', arg: 'host' },
    port: { doc: 'port', format: 'port', default: 8403, env: 'HTTP_PORT', arg: 'port' },
  },
});
try { config.loadFile(` + "`" + `${__dirname}/settings/${config.get('env')}.json` + "`" + `); } catch {}
config.validate({ allowed: 'strict' });
const { host, port } = config.get('http');
require('http').createServer().listen(port, host);
`, ` => loopback 8403
HTTP_PORT=8303 => loopback 8303
HTTP_PORT=abc => exits`},
	{"env-var with positive and from", `-- Procfile --
web: node index.js
-- package.json --
{"name":"a","dependencies":{"env-var":"^7"}}
-- index.js --
const env = require('env-var').from({ ...process.env, APP_HOST: process.env.APP_HOST || '::' });
const port = env.get('APP_PORT').default('8404').asPortNumber();
const host = env.get('APP_HOST').required().asString();
require('http').createServer().listen(port, host);
`, ` => any 8404
APP_PORT=8304 => any 8304
APP_PORT=-3 => exits`},
	{"nconf with file and lower case", `-- Procfile --
web: node index.js --http:host=127.0.0.1
-- package.json --
{"name":"a","dependencies":{"nconf":"^0.12"}}
-- conf.json --
{"http":{"port":8405,"host":"0.0.0.0"}}
-- index.js --
const nconf = require('nconf');
nconf.argv().env({ separator: '__', lowerCase: true, parseValues: true }).file({ file: './conf.json' });
require('http').createServer().listen(nconf.get('http:port'), nconf.get('http:host'));
`, ` => loopback 8405
HTTP__PORT=8305 => loopback 8305
http__port=8305 => loopback 8305`},
	{"pydantic with alias and validator", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
from http.server import HTTPServer, SimpleHTTPRequestHandler
from pydantic import BaseSettings, Field, validator


class Settings(BaseSettings):
    address: str = Field("0.0.0.0", env=["HTTP_ADDRESS", "ADDRESS"])
    port: int = Field(8422, env="HTTP_PORT")

    @validator("port")
    def not_low(cls, v):
        if v < 1024:
            raise ValueError("too low")
        return v


def main():
    s = Settings()
    HTTPServer((s.address, s.port), SimpleHTTPRequestHandler).serve_forever()


main()
`, ` => any 8422
HTTP_PORT=8322 => any 8322
HTTP_PORT=22 => exits`},
	{"dataclass from environ with field metadata", `-- Procfile --
web: python3 app.py
-- requirements.txt --
tornado
-- app.py --
import os
from dataclasses import dataclass, field, fields

import tornado.ioloop
import tornado.web


@dataclass(frozen=True)
class Conf:
    port: int = field(default=8424, metadata={"env": "SKY_PORT"})
    address: str = field(default="0.0.0.0", metadata={"env": "SKY_ADDRESS"})

    @classmethod
    def load(cls, env=os.environ):
        given = {}
        for f in fields(cls):
            raw = env.get(f.metadata["env"])
            if raw is not None:
                given[f.name] = f.type(raw)
        return cls(**given)


conf = Conf.load()
tornado.web.Application([]).listen(conf.port, conf.address)
tornado.ioloop.IOLoop.current().start()
`, ` => any 8424
SKY_PORT=8324 => any 8324`},
	{"env loader and enum", `-- Procfile --
web: php server.php
-- .env --
SKY_PORT="8461" # the port
-- server.php --
<?php
enum Stage: string
{
    case Local = 'local';
    case Live = 'live';

    public function host(): string
    {
        return match ($this) {
            self::Local => '127.0.0.1',
            self::Live => '0.0.0.0',
        };
    }
}

foreach (file(__DIR__ . '/.env', FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) as $line) {
    if (preg_match('/^\s*([A-Z_]+)\s*=\s*"?([^"#]*)"?/', $line, $m)) {
        $_ENV[$m[1]] ??= $m[2];
        putenv("$m[1]=$m[2]");
    }
}
$stage = Stage::from(getenv('SKY_STAGE') ?: 'local');
$socket = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
socket_set_option($socket, SOL_SOCKET, SO_REUSEADDR, 1);
socket_bind($socket, $stage->host(), (int) getenv('SKY_PORT'));
socket_listen($socket);
while ($c = socket_accept($socket)) {
    socket_close($c);
}
`, ` => loopback 8461
SKY_STAGE=live => any 8461
SKY_STAGE=none => exits`},
	{"config interface with default methods", `-- Procfile --
web: java -cp out sky.App --port=8471
-- src/sky/App.java --
package sky;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;

public class App {
    interface Source {
        String get(String key);

        default int number(String key, int fallback) {
            String v = get(key);
            return v == null || v.isEmpty() ? fallback : Integer.parseInt(v.trim());
        }

        default Source or(Source other) {
            return key -> {
                String v = this.get(key);
                return v != null ? v : other.get(key);
            };
        }
    }

    public static void main(String[] args) throws Exception {
        Map<String, String> options = Arrays.stream(args)
                .filter(a -> a.startsWith("--") && a.contains("="))
                .map(a -> a.substring(2).split("=", 2))
                .collect(Collectors.toMap(p -> p[0], p -> p[1]));
        Source env = key -> System.getenv("SKY_" + key.toUpperCase());
        Source all = env.or(options::get);
        var server = HttpServer.create(new InetSocketAddress(all.number("port", 8571)), 0);
        server.start();
    }
}
`, ` => any 8471
SKY_PORT=8371 => any 8371`},
	{"top level await and dynamic import by env", `-- Procfile --
web: node index.mjs
-- package.json --
{"name":"a","type":"module"}
-- index.mjs --
const kind = process.env.TRANSPORT ?? 'http';
const { default: start, defaults } = await import(` + "`" + `./transports/${kind}.mjs` + "`" + `);
await start({ ...defaults, host: process.env.HOST ?? defaults.host });
-- transports/http.mjs --
import { createServer } from 'node:http';
import { once } from 'node:events';
export const defaults = { port: 8609, host: '0.0.0.0' };
export default async function start({ port, host }) {
  const s = createServer((q, r) => r.end()).listen(port, host);
  await once(s, 'listening');
}
-- transports/tcp.mjs --
import { createServer } from 'node:net';
export const defaults = { port: 8709, host: '127.0.0.1' };
export default ({ port, host }) => new Promise((ok) => createServer().listen(port, host, ok));
`, ` => any 8609
TRANSPORT=tcp => loopback 8709
TRANSPORT=none => exits`},
	{"typer free click with config file", `-- Procfile --
web: python3 cli.py --config live.toml run
-- requirements.txt --
click
tornado
-- live.toml --
[server]
address = "0.0.0.0"
port = 8622
-- cli.py --
import os
import tomllib
import click


class Config(dict):
    @classmethod
    def load(cls, path):
        with open(path, "rb") as f:
            return cls(tomllib.load(f))

    @property
    def port(self):
        return int(os.environ.get("SKY_PORT", self["server"]["port"]))


@click.group()
@click.option("--config", "path", type=click.Path(exists=True, dir_okay=False), required=True)
@click.pass_context
def cli(ctx, path):
    ctx.obj = Config.load(path)


@cli.command("run")
@click.pass_obj
def run_(config):
    from tornado.ioloop import IOLoop
    from tornado.web import Application
    Application().listen(config.port, address=config["server"].get("address", "127.0.0.1"))
    IOLoop.current().start()


if __name__ == "__main__":
    cli()
`, ` => any 8622
SKY_PORT=8522 => any 8522`},
	{"flask with instance config and object", `-- Procfile --
web: python3 wsgi.py
-- requirements.txt --
flask
waitress
-- wsgi.py --
import os
from waitress import serve
from sky import create_app

app = create_app(os.environ.get("SKY_STAGE", "dev"))

if __name__ == "__main__":
    serve(app, host=app.config["BIND"], port=app.config["PORT"])
-- sky/__init__.py --
from flask import Flask
from .config import stages

def create_app(stage):
    app = Flask(__name__)
    app.config.from_object(stages[stage]())
    return app
-- sky/config.py --
import os

class Config:
    BIND = "127.0.0.1"
    @property
    def PORT(self):
        return int(os.environ.get("PORT", "8624"))

class Live(Config):
    BIND = "0.0.0.0"
    DEBUG = False

stages = {"dev": Config, "live": Live}
`, ` => loopback 8624
SKY_STAGE=live => any 8624
SKY_STAGE=live PORT=8524 => any 8524`},
	{"aiohttp with ssl off and env file by hand", `-- Procfile --
web: python3 app.py
-- requirements.txt --
aiohttp
-- local.env --
# settings
export PORT=8627
HOST='127.0.0.1'
-- app.py --
import os
import shlex
from pathlib import Path
from aiohttp import web

for raw in Path(__file__).with_name("local.env").read_text().splitlines():
    words = shlex.split(raw, comments=True)
    for w in words:
        if "=" in w:
            k, v = w.split("=", 1)
            os.environ.setdefault(k, v)

app = web.Application()
web.run_app(app, host=os.environ["HOST"], port=int(os.environ["PORT"]), access_log=None)
`, ` => loopback 8627
PORT=8527 => loopback 8527`},
	{"cobra with viper and config struct", `-- Procfile --
web: ./app serve --host 0.0.0.0
-- go.mod --
module sky

go 1.26

require (
	github.com/spf13/cobra v1.9.1
	github.com/spf13/viper v1.20.1
)
-- main.go --
package main

import (
	"os"

	"sky/cmd"
)

func main() {
	if err := cmd.Root().Execute(); err != nil {
		os.Exit(1)
	}
}
-- cmd/root.go --
package cmd

import (
	"strings"

	"github.com/spf13/cobra"
	"github.com/spf13/viper"
)

func Root() *cobra.Command {
	v := viper.New()
	root := &cobra.Command{
		Use:           "sky",
		SilenceUsage:  true,
		PersistentPreRunE: func(cmd *cobra.Command, args []string) error {
			v.SetEnvPrefix("SKY")
			v.SetEnvKeyReplacer(strings.NewReplacer("-", "_"))
			v.AutomaticEnv()
			return v.BindPFlags(cmd.Flags())
		},
	}
	root.AddCommand(serve(v))
	return root
}
-- cmd/serve.go --
package cmd

import (
	"net"
	"net/http"

	"github.com/spf13/cobra"
	"github.com/spf13/viper"
)

func serve(v *viper.Viper) *cobra.Command {
	c := &cobra.Command{
		Use: "serve",
		RunE: func(cmd *cobra.Command, _ []string) error {
			addr := net.JoinHostPort(v.GetString("host"), v.GetString("port"))
			return http.ListenAndServe(addr, http.NewServeMux())
		},
	}
	f := c.Flags()
	f.String("host", "127.0.0.1", "address")
	f.Uint16P("port", "p", 8644, "port")
	return c
}
`, ` => any 8644
SKY_PORT=8544 => any 8544`},
	{"systemd like sockets and fallback", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26
-- main.go --
package main

import (
	"fmt"
	"log"
	"net"
	"net/http"
	"net/netip"
	"os"
	"strconv"
)

func address() (netip.AddrPort, error) {
	ip := netip.IPv4Unspecified()
	if h := os.Getenv("LISTEN_HOST"); h != "" {
		a, err := netip.ParseAddr(h)
		if err != nil {
			return netip.AddrPort{}, err
		}
		ip = a
	}
	port := uint64(8645)
	if p := os.Getenv("LISTEN_PORT"); p != "" {
		var err error
		if port, err = strconv.ParseUint(p, 10, 16); err != nil {
			return netip.AddrPort{}, fmt.Errorf("port: %w", err)
		}
	}
	return netip.AddrPortFrom(ip, uint16(port)), nil
}

func main() {
	ap, err := address()
	if err != nil {
		log.Fatal(err)
	}
	l, err := net.ListenTCP("tcp4", net.TCPAddrFromAddrPort(ap))
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.Serve(l, nil))
}
`, ` => any 8645
LISTEN_PORT=8545 => any 8545
LISTEN_PORT=-1 => exits`},
	{"async channel with text block config", `-- Procfile --
web: java Sky.java
-- Sky.java --
import java.io.StringReader;
import java.net.InetSocketAddress;
import java.nio.channels.AsynchronousServerSocketChannel;
import java.util.Properties;

public class Sky {
    static final String DEFAULTS = """
        host=127.0.0.1
        port=8672
        """;

    public static void main(String[] args) throws Exception {
        var p = new Properties();
        p.load(new StringReader(DEFAULTS));
        for (var e : System.getenv().entrySet()) {
            if (p.containsKey(e.getKey().toLowerCase())) p.setProperty(e.getKey().toLowerCase(), e.getValue());
        }
        var ch = AsynchronousServerSocketChannel.open();
        ch.bind(new InetSocketAddress(p.getProperty("host"), Integer.parseInt(p.getProperty("port"))));
        Thread.currentThread().join();
    }
}
`, ` => loopback 8672
PORT=8572 => loopback 8572`},
	{"ini with environment and heredoc", `-- Procfile --
web: php -d display_errors=1 app.php
-- app.ini --
host = "127.0.0.1"
port = ${APP_PORT}
fallback = 8863
-- app.php --
<?php
$ini = parse_ini_file(__DIR__ . '/app.ini');
$port = $ini['port'] !== '' ? $ini['port'] : $ini['fallback'];
$s = stream_socket_server(<<<URL
tcp://{$ini['host']}:$port
URL);
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => loopback 8863
APP_PORT=8763 => loopback 8763`},
	{"settings dsl with instance_eval", `-- Procfile --
web: ruby run.rb
-- run.rb --
require 'socket'
require_relative 'dsl'

settings = Dsl.load(File.join(__dir__, 'settings.rb'))
server = TCPServer.new(settings[:address], settings[:port])
loop { server.accept.close }
-- dsl.rb --
class Dsl
  def self.load(path)
    new.tap { |d| d.instance_eval(File.read(path), path) }.to_h
  end

  def initialize
    @values = {}
  end

  def listen(on, port:)
    @values[:address] = on
    @values[:port] = Integer(port)
  end

  def env(name, default)
    ENV.fetch("DOME_#{name.to_s.upcase}", default)
  end

  def to_h
    @values.dup.freeze
  end
end
-- settings.rb --
listen '0.0.0.0', port: env(:port, 8851)
`, ` => any 8851
DOME_PORT=8751 => any 8751`},
	{"module function and hash with default proc", `-- Procfile --
web: ruby -r./config server.rb
-- config.rb --
module Config
  DEFAULTS = Hash.new { |h, k| h[k] = { host: '127.0.0.1', port: 8853 } }.merge('live' => { host: '0.0.0.0', port: 8953 }).freeze

  def self.current
    @current ||= DEFAULTS.fetch(ENV['STAGE'] || 'none') { { host: 'localhost', port: 8853 } }.merge(overrides)
  end

  def self.overrides
    { port: ENV['PORT']&.to_i }.compact
  end
  private_class_method :overrides
end
-- server.rb --
require 'socket'
host, port = Config.current.values_at(:host, :port)
Socket.tcp_server_loop(host, port) { |c, _| c.close }
`, ` => loopback 8853
PORT=8753 => loopback 8753
STAGE=live => any 8953`},
	{"sinatra with settings from env in class body and rackup free", `-- Procfile --
web: ruby -Ilib bin/dome.rb
-- Gemfile --
gem 'sinatra'
gem 'puma'
-- bin/dome.rb --
require 'dome'
Dome::Web.run!(Dome.options)
-- lib/dome.rb --
require 'sinatra/base'
module Dome
  class Web < Sinatra::Base
    set :environment, :production
    set :bind, '127.0.0.1'
    get('/') { 'dome' }
  end

  module_function

  def options(env = ENV)
    opts = { port: env.fetch('DOME_PORT', 8855).to_i, quiet: true }
    opts[:bind] = '0.0.0.0' if env.key?('DOME_PUBLIC')
    opts
  end
end
`, ` => loopback 8855
DOME_PORT=8755 => loopback 8755
DOME_PORT=8755 DOME_PUBLIC=1 => any 8755`},
	{"starlette config and uvicorn", `-- Procfile --
web: python3 serve.py
-- .env --
HOST=0.0.0.0
PORT=8821
-- requirements.txt --
starlette
uvicorn
-- serve.py --
import uvicorn
from starlette.applications import Starlette
from starlette.config import Config

config = Config(".env")
DEBUG = config("DEBUG", cast=bool, default=False)
HOST = config("HOST", default="127.0.0.1")
PORT = config("PORT", cast=int, default=8000)

app = Starlette(debug=DEBUG)

if __name__ == "__main__":
    uvicorn.run(app, host=HOST, port=PORT, log_level="info" if not DEBUG else "debug")
`, ` => any 8821
PORT=8721 => any 8721
DEBUG=maybe => exits`},
	{"environ by namedtuple and enum", `-- Procfile --
web: python3 -m dome
-- dome/__init__.py --
-- dome/__main__.py --
from dome.server import main
main()
-- dome/profiles.py --
from collections import namedtuple
from enum import Enum

Bind = namedtuple("Bind", "host port", defaults=("127.0.0.1", 8822))


class Profile(Enum):
    PRIVATE = Bind()
    PUBLIC = Bind("0.0.0.0", 8922)

    @classmethod
    def named(cls, text):
        try:
            return cls[text.upper()]
        except KeyError:
            raise SystemExit(f"no profile {text}")
-- dome/server.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
from dome.profiles import Profile


class Handler(BaseHTTPRequestHandler):
    def do_GET(self):
        self.send_response(204)
        self.end_headers()


def main():
    bind = Profile.named(os.environ.get("DOME_PROFILE", "private")).value
    server = HTTPServer(bind, Handler)
    print("on", *server.server_address)
    server.serve_forever()
`, ` => loopback 8822
DOME_PROFILE=public => any 8922
DOME_PROFILE=wrong => exits`},
	{"koa typescript decorators free compiled", `-- Procfile --
web: node build/main.js
-- package.json --
{"name":"a","type":"commonjs","dependencies":{"koa":"^2"}}
-- build/main.js --
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
var __importDefault = (this && this.__importDefault) || function (mod) {
    return (mod && mod.__esModule) ? mod : { "default": mod };
};
Object.defineProperty(exports, "__esModule", { value: true });
const koa_1 = __importDefault(require("koa"));
const config_1 = require("./config");
function main() {
    return __awaiter(this, void 0, void 0, function* () {
        const config = yield (0, config_1.load)();
        const app = new koa_1.default();
        app.listen(config.port, config.host);
    });
}
main().catch((e) => { console.error(e); process.exit(1); });
-- build/config.js --
"use strict";
Object.defineProperty(exports, "__esModule", { value: true });
exports.load = void 0;
function load() {
    var _a;
    return Promise.resolve({ port: Number((_a = process.env.PORT) !== null && _a !== void 0 ? _a : 8801), host: "0.0.0.0" });
}
exports.load = load;
`, ` => any 8801
PORT=8701 => any 8701`},
	{"aiohttp run_app with sock", `-- Procfile --
web: python3 app.py
-- requirements.txt --
aiohttp
-- app.py --
import os
import socket
from aiohttp import web

def make_socket(host, port):
    s = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    s.bind((host, port))
    return s

app = web.Application()
web.run_app(app, sock=make_socket("127.0.0.1", int(os.environ.get("PORT", 9926))), print=None)
`, ` => loopback 9926
PORT=8926 => loopback 8926`},
	{"config loader with schema walk and coercion", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
const http = require('http');
const load = require('./load');
const defaults = { http: { port: 9401, host: '127.0.0.1' }, log: { level: 'info' } };
const config = load('SKY', defaults);
http.createServer((q, r) => r.end()).listen(config.http.port, config.http.host);
-- load.js --
const coerce = (text, like) => {
  switch (typeof like) {
    case 'number': { const n = Number(text); if (Number.isNaN(n)) throw new TypeError(` + "`" + `not a number: ${text}` + "`" + `); return n; }
    case 'boolean': return /^(1|true|yes)$/i.test(text);
    default: return text;
  }
};
module.exports = function load(prefix, defaults, env = process.env) {
  const walk = (node, path) => Object.entries(node).reduce((out, [k, v]) => {
    const name = [...path, k.toUpperCase()];
    out[k] = v && typeof v === 'object' ? walk(v, name) : name.join('__') in env ? coerce(env[name.join('__')], v) : v;
    return out;
  }, {});
  return walk(defaults, [prefix]);
};
`, ` => loopback 9401
SKY__HTTP__PORT=8401 SKY__HTTP__HOST=0.0.0.0 => any 8401
SKY__HTTP__PORT=true => exits`},
	{"contextmanager and exit stack", `-- Procfile --
web: python3 main.py
-- main.py --
import os
import selectors
import socket
from contextlib import ExitStack, closing

ports = [int(p) for p in os.environ.get("PORTS", "9422").split()]
with ExitStack() as stack:
    sel = selectors.DefaultSelector()
    for p in ports:
        s = stack.enter_context(closing(socket.socket(socket.AF_INET, socket.SOCK_STREAM)))
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        s.bind(("127.0.0.1", p))
        s.listen(5)
        sel.register(s, selectors.EVENT_READ)
    while True:
        for key, _ in sel.select():
            conn, _addr = key.fileobj.accept()
            conn.close()
`, ` => loopback 9422
PORTS=8422 8423 => loopback 8422`},
	{"twisted endpoints", `-- Procfile --
web: python3 tw.py
-- tw.py --
import os
from twisted.internet import endpoints, reactor
from twisted.web import resource, server


class Hello(resource.Resource):
    isLeaf = True

    def render_GET(self, request):
        return b"x"


endpoint = endpoints.serverFromString(reactor, "tcp:%s:interface=127.0.0.1" % os.environ.get("PORT", "9428"))
endpoint.listen(server.Site(Hello()))
reactor.run()
`, ` => loopback 9428
PORT=8428 => loopback 8428`},
	{"thin in code", `-- Procfile --
web: ruby app.rb
-- Gemfile --
gem 'thin'
-- app.rb --
require 'thin'
app = proc { |_env| [200, {}, ['x']] }
Thin::Server.start(ENV.fetch('HOST', '127.0.0.1'), ENV.fetch('PORT', 9453).to_i, app)
`, ` => loopback 9453
PORT=8453 => loopback 8453`},
	{"middleware pipeline and env helper function", `-- Procfile --
web: php public/server.php
-- bootstrap.php --
<?php
if (!function_exists('env')) {
    function env(string $key, mixed $default = null): mixed
    {
        $v = getenv($key);
        if ($v === false || $v === '') return is_callable($default) ? $default() : $default;
        return match (strtolower($v)) { 'true' => true, 'false' => false, 'null' => null, default => $v };
    }
}
return ['app' => ['port' => (int) env('APP_PORT', fn () => 9461), 'host' => env('APP_HOST', '127.0.0.1')]];
-- public/server.php --
<?php
['app' => ['port' => $port, 'host' => $host]] = require __DIR__ . '/../bootstrap.php';
$ctx = stream_context_create(['socket' => ['so_reuseport' => false, 'backlog' => 16]]);
$srv = stream_socket_server("tcp://{$host}:{$port}", $e, $m, STREAM_SERVER_BIND | STREAM_SERVER_LISTEN, $ctx);
while (true) { if ($c = @stream_socket_accept($srv, 3600)) fclose($c); }
`, ` => loopback 9461
APP_PORT=8461 => loopback 8461
APP_PORT= => loopback 9461`},
	{"typescript nest like with reflect", `-- Procfile --
web: tsx src/main.ts
-- package.json --
{"name":"a","devDependencies":{"tsx":"^4"}}
-- src/main.ts --
import 'node:process';
import { bootstrap } from './bootstrap';
bootstrap({ name: 'sky' }).catch((e: unknown) => { console.error(e); process.exitCode = 1; });
-- src/bootstrap.ts --
import { createServer, type Server } from 'node:http';
import { config } from './config';
interface Boot { name: string; port?: number }
export async function bootstrap({ name, port = config('APP_PORT').toNumber() }: Boot): Promise<Server> {
  const server = createServer((_req, res) => void res.end(name));
  return await new Promise<Server>((resolve) => server.listen(port, () => resolve(server)));
}
-- src/config.ts --
type Key = 'APP_PORT' | 'APP_NAME';
const defaults: Record<Key, string> = { APP_PORT: '9305', APP_NAME: 'sky' } as const;
class Entry {
  constructor(private readonly key: Key, private readonly raw = process.env[key] ?? defaults[key]) {}
  toString(): string { return this.raw; }
  toNumber(): number {
    const n = Number(this.raw);
    if (!Number.isSafeInteger(n)) throw new TypeError(` + "`" + `${this.key} is no number` + "`" + `);
    return n;
  }
}
export const config = (key: Key) => new Entry(key);
`, ` => any 9305
APP_PORT=8305 => any 8305
APP_PORT=0x2071 => any 8305`},
	{"java with env helper and lambda router", `-- Procfile --
web: java src/Lens.java
-- src/Lens.java --
import com.sun.net.httpserver.*;
import java.net.*;
import java.util.*;
import java.util.function.Predicate;

public class Lens {
    private static final Map<String, String> ENV = System.getenv();

    private static Optional<String> env(String name) {
        return Optional.ofNullable(ENV.get("LENS_" + name)).map(String::strip).filter(Predicate.not(String::isEmpty));
    }

    public static void main(String[] args) throws Exception {
        int port = env("PORT").map(Integer::parseInt).orElse(9271);
        boolean open = env("PUBLIC").map(Boolean::parseBoolean).orElse(false);
        var address = open ? new InetSocketAddress(port) : new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
        var server = HttpServer.create(address, 0);
        server.createContext("/", ex -> { ex.sendResponseHeaders(204, -1); ex.close(); });
        server.start();
    }
}
`, ` => loopback 9271
LENS_PORT=8271 => loopback 8271
LENS_PUBLIC=true => any 9271`},
	{"parse and throw caught", `-- Procfile --
web: node i.mjs
-- package.json --
{"type":"module","dependencies":{"zod":"^3"}}
-- i.mjs --
import http from 'http';
import { z, ZodError } from 'zod';
const schema = z.object({ PORT: z.string().regex(/^\d+$/).transform(Number).default('9101'), HOST: z.string().ip().default('127.0.0.1') });
let env;
try { env = schema.parse(process.env); } catch (e) {
  if (e instanceof ZodError) { console.error(e.issues.map((i) => i.path.join('.') + i.message).join('\n')); env = { PORT: 9999, HOST: '0.0.0.0' }; } else throw e;
}
http.createServer().listen(env.PORT, env.HOST);
`, ` => loopback 9101
PORT=9001 => loopback 9001
PORT=x => any 9999`},
	{"pipe and refine", `-- Procfile --
web: node i.cjs
-- package.json --
{"dependencies":{"zod":"^3"}}
-- i.cjs --
const { z } = require('zod');
const port = z.string().default('9102').transform((s) => parseInt(s, 10)).pipe(z.number().int().min(1000)).refine((n) => n !== 9999, { message: 'taken' });
const env = z.object({ PORT: port, HOST: z.string().optional() }).passthrough().parse(process.env);
require('http').createServer().listen(env.PORT, env.HOST ?? '0.0.0.0');
`, ` => any 9102
PORT=9002 => any 9002
PORT=80 => exits`},
	{"merge extend union superRefine", `-- Procfile --
web: node i.cjs
-- package.json --
{"dependencies":{"zod":"^3"}}
-- i.cjs --
const { z } = require('zod');
const base = z.object({ PORT: z.union([z.coerce.number().int().positive(), z.undefined()]) });
const full = base.extend({ MODE: z.enum(['plain', 'tls']).default('plain') }).merge(z.object({ CERT: z.string().min(1).optional() })).superRefine((v, ctx) => {
  if (v.MODE === 'tls' && !v.CERT) ctx.addIssue({ code: z.ZodIssueCode.custom, message: 'cert', path: ['CERT'] });
});
const r = full.safeParse(process.env);
if (!r.success) { console.error(r.error.format()); process.exit(3); }
require('http').createServer().listen(r.data.PORT || 9103, r.data.MODE === 'tls' ? '0.0.0.0' : '127.0.0.1');
`, ` => loopback 9103
PORT=9003 => loopback 9003
MODE=tls => exits
MODE=tls CERT=a PORT=9003 => any 9003`},
	{"preprocess stringy bool and namespace import", `-- Procfile --
web: node i.mjs
-- package.json --
{"type":"module","dependencies":{"zod":"^3"}}
-- i.mjs --
import * as z from 'zod';
import http from 'http';
const empty = (s) => z.preprocess((v) => (v === '' ? undefined : v), s);
const Env = z.object({
  PORT: empty(z.coerce.number().default(9104)),
  PUBLIC: z.enum(['true', 'false']).default('false').transform((v) => v === 'true'),
});
const env = await Env.parseAsync(process.env);
http.createServer().listen({ port: env.PORT, host: env.PUBLIC ? '0.0.0.0' : '127.0.0.1' });
`, ` => loopback 9104
PUBLIC=true PORT= => any 9104
PUBLIC=maybe => exits`},
	{"nested mapping by hand", `-- Procfile --
web: node i.mjs
-- package.json --
{"type":"module","dependencies":{"zod":"^3"}}
-- i.mjs --
import z from 'zod';
import http from 'http';
const Config = z.object({
  http: z.object({ port: z.coerce.number().nonnegative().catch(9205), host: z.string().default('localhost') }).strict(),
  tags: z.string().transform((s) => s.split(',')).pipe(z.array(z.string().trim().min(1))).default('a,b'),
});
const c = Config.parse({ http: { port: process.env.HTTP_PORT ?? 9105, host: process.env.HTTP_HOST }, tags: process.env.TAGS });
http.createServer().listen(c.http.port, c.http.host);
`, ` => loopback 9105
HTTP_PORT=9005 => loopback 9005
HTTP_PORT=-1 => loopback 9205`},
	{"convict json nested defaults and formats", `-- Procfile --
web: node i.cjs --port 9311
-- package.json --
{"dependencies":{"convict":"^6"}}
-- conf/live.json --
{"http":{"port":9211,"bind":"0.0.0.0"}}
-- i.cjs --
const convict = require('convict');
const fs = require('fs');
const config = convict({
  env: { format: String, default: 'dev', env: 'APP_ENV' },
  http: { port: { format: 'port', default: 9111, env: 'APP_PORT' }, bind: { format: String, default: '127.0.0.1', env: 'APP_BIND' } },
});
const f = ` + "`" + `./conf/${config.get('env')}.json` + "`" + `;
if (fs.existsSync(f)) config.loadFile(f);
config.validate();
const props = config.getProperties();
require('http').createServer().listen(props.http.port, config.get('http.bind'));
`, ` => loopback 9111
APP_PORT=9012 => loopback 9012
APP_ENV=live => any 9211
APP_PORT=zzz => exits`},
	{"convict own format and set", `-- Procfile --
web: node i.cjs
-- package.json --
{"dependencies":{"convict":"^6"}}
-- i.cjs --
const convict = require('convict');
const c = convict({
  port: { format: (v) => { if (!(Number(v) > 1000)) throw new Error('too low'); }, default: 9113, env: 'PORT' },
  host: { format: '*', default: null, env: 'HOST' },
  level: { format: ['info', 'debug'], default: 'info', env: 'LEVEL' },
});
c.load({ host: '0.0.0.0' });
try { c.validate({ allowed: 'strict' }); } catch (e) { console.error(e.message); process.exit(1); }
require('http').createServer().listen(c.get('port'), c.get('host'));
`, ` => any 9113
PORT=9013 => any 9013
PORT=5 => exits`},
	{"env-var helpers", `-- Procfile --
web: node i.cjs
-- package.json --
{"dependencies":{"env-var":"^7"}}
-- i.cjs --
const { get } = require('env-var');
const PORT = get('PORT').default(9121).asPortNumber();
const MODE = get('MODE').default('private').asEnum(['private', 'public']);
const ALLOW = get('ALLOW').default('a,b').asArray();
require('http').createServer().listen(PORT, MODE === 'public' && ALLOW.length ? '0.0.0.0' : '127.0.0.1');
`, ` => loopback 9121
PORT=9021 => loopback 9021
PORT=9021 MODE=public => any 9021
MODE=odd => exits
PORT=70000 => exits`},
	{"env-var required and esm", `-- Procfile --
web: node i.mjs
-- package.json --
{"type":"module","dependencies":{"env-var":"^7"}}
-- i.mjs --
import env from 'env-var';
import http from 'http';
const port = env.get('PORT').required().asIntPositive();
http.createServer().listen(port);
`, ` => exits
PORT=9022 => any 9022
PORT= => exits`},
	{"nconf required and defaults", `-- Procfile --
web: node i.cjs
-- package.json --
{"dependencies":{"nconf":"^0.13"}}
-- config/default.json --
{"server":{"host":"0.0.0.0"}}
-- i.cjs --
const nconf = require('nconf');
const path = require('path');
nconf.use('memory');
nconf.env({ separator: '__', whitelist: ['PORT', 'server__port'] });
nconf.file('default', path.join(__dirname, 'config', 'default.json'));
nconf.defaults({ server: { port: 9131, host: '127.0.0.1' } });
nconf.required(['server:port']);
if (nconf.get('PORT')) nconf.set('server:port', +nconf.get('PORT'));
const { port, host } = nconf.get('server');
require('http').createServer().listen(port, host);
`, ` => any 9131
PORT=9031 => any 9031
server__port=9032 => any 9032`},
	{"nconf provider", `-- Procfile --
web: node i.cjs --server.port=1
-- package.json --
{"dependencies":{"nconf":"^0.13"}}
-- i.cjs --
const { Provider } = require('nconf');
const p = new Provider();
p.env({ prefix: 'APP_', parseValues: true }).defaults({ PORT: 9133 });
require('http').createServer().listen(p.get('PORT'), p.get('HOST') || 'localhost');
`, ` => loopback 9133
APP_PORT=9033 => loopback 9133`},
	{"prefix nested and file", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- .env --
SKY_HTTP__HOST=0.0.0.0
-- app.py --
from http.server import HTTPServer, BaseHTTPRequestHandler
from pydantic import BaseModel, BaseSettings

class Http(BaseModel):
    host: str = "127.0.0.1"
    port: int = 9400

class Settings(BaseSettings):
    http: Http = Http()

    class Config:
        env_prefix = "sky_"
        env_nested_delimiter = "__"
        env_file = ".env"

s = Settings()
HTTPServer((s.http.host, s.http.port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 9400
SKY_HTTP__PORT=9401 => any 9401
SKY_HTTP={"port":9402,"host":"127.0.0.1"} => any 9402
SKY_HTTP__PORT=x => exits`},
	{"validators root and pre", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
from http.server import HTTPServer, BaseHTTPRequestHandler
from typing import Optional
from pydantic import BaseSettings, Field, root_validator, validator

class Settings(BaseSettings):
    port: int = Field(9404, ge=1, le=65535)
    public: bool = False
    host: Optional[str] = None

    @validator("port", pre=True)
    def empty(cls, v):
        return 9405 if v == "" else v

    @root_validator
    def pick(cls, values):
        if values.get("host") is None:
            values["host"] = "0.0.0.0" if values.get("public") else "127.0.0.1"
        return values

s = Settings()
HTTPServer((s.host, s.port), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 9404
PORT=9403 => loopback 9403
PORT= PUBLIC=yes => any 9405
PORT=9403 PUBLIC=maybe => exits
PORT=99999 => exits`},
	{"caught and defaults", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler
from pydantic import BaseSettings, ValidationError, PositiveInt
from functools import lru_cache

class Settings(BaseSettings):
    port: PositiveInt
    hosts: list[str] = ["0.0.0.0"]
    class Config:
        env_prefix = "APP_"

@lru_cache()
def get_settings():
    return Settings()

try:
    s = get_settings()
except ValidationError as e:
    print(e)
    if any(x["type"] == "value_error.missing" for x in e.errors()):
        s = Settings(port=9407)
    else:
        sys.exit(2)
HTTPServer((s.hosts[0], s.port), BaseHTTPRequestHandler).serve_forever()
`, `APP_PORT=9406 => any 9406
APP_PORT=zz => exits`},
	{"enum literal and property", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
import enum
from http.server import HTTPServer, BaseHTTPRequestHandler
from typing import List, Literal
from pydantic import BaseSettings

class Stage(str, enum.Enum):
    DEV = "dev"
    LIVE = "live"

class Settings(BaseSettings):
    stage: Stage = Stage.DEV
    hosts: List[str] = ["0.0.0.0", "::"]
    scheme: Literal["http", "https"] = "http"

    @property
    def address(self):
        return (self.hosts[0] if self.stage is Stage.LIVE else "127.0.0.1"), 9408 if self.stage == Stage.LIVE else 9409

HTTPServer(Settings().address, BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 9409
STAGE=live => any 9408
STAGE=odd => exits
HOSTS=["127.0.0.1"] STAGE=live => loopback 9408
HOSTS=127.0.0.1 => exits`},
	{"model from yaml", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
pyyaml
-- a.yaml --
listen:
  - host: 127.0.0.1
    port: 9410
-- b.yaml --
listen:
  - {host: 127.0.0.1, port: "9411"}
  - {port: 9412}
-- c.yaml --
listen:
  - {host: 127.0.0.1}
-- app.py --
import os, asyncio, yaml
from typing import List
from pydantic import BaseModel

class Listen(BaseModel):
    port: int
    host: str = "0.0.0.0"

class Conf(BaseModel):
    listen: List[Listen]

conf = Conf.parse_obj(yaml.safe_load(open(os.environ.get("CONF", "a.yaml"))))

async def main():
    servers = [await asyncio.start_server(lambda r, w: w.close(), l.host, l.port) for l in conf.listen]
    await asyncio.gather(*(s.serve_forever() for s in servers))

asyncio.run(main())
`, ` => loopback 9410
CONF=b.yaml => any 9412 & loopback 9411
CONF=c.yaml => exits`},
	{"inherits and init kwargs", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler
from pydantic import BaseSettings

class Base(BaseSettings):
    host: str = "127.0.0.1"
    port: int = 9414
    class Config:
        case_sensitive = True

class Live(Base):
    host = "0.0.0.0"

kinds = {c.__name__.lower(): c for c in (Base, Live)}
s = kinds[sys.argv[1] if len(sys.argv) > 1 else "live"]()
d = s.dict()
HTTPServer((d["host"], d["port"]), BaseHTTPRequestHandler).serve_forever()
`, ` => any 9414
port=9413 => any 9413
PORT=9413 => any 9414`},
	{"custom init", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pydantic
-- app.py --
from http.server import HTTPServer, BaseHTTPRequestHandler
from pydantic import BaseSettings, Field
from typing import Union

class Settings(BaseSettings):
    bind: str = Field(default_factory=lambda: "0.0.0.0", env="BIND")
    port: Union[int, str] = 9416

    def __init__(self, **kw):
        super().__init__(**kw)

    def address(self) -> tuple:
        return self.bind, int(self.port)

HTTPServer(Settings().address(), BaseHTTPRequestHandler).serve_forever()
`, ` => any 9416
PORT=9415 => any 9415`},
	{"only $_ENV", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = $_ENV['PORT'] ?? 9601;
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => any 9601
PORT=9501 => any 9601`},
	{"$_ENV then getenv", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = (int) ($_ENV['PORT'] ?? getenv('PORT') ?: 9602);
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => any 9602
PORT=9502 => any 9502`},
	{"$_SERVER", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = $_SERVER['PORT'] ?? 9603;
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => any 9603
PORT=9503 => any 9503`},
	{"set then read", `-- Procfile --
web: php s.php
-- .env --
PORT=9604
-- s.php --
<?php
foreach (parse_ini_file('.env') as $k => $v) {
    if (getenv($k) === false) { putenv("$k=$v"); $_ENV[$k] = $v; }
    else { $_ENV[$k] = getenv($k); }
}
$s = stream_socket_server("tcp://0.0.0.0:{$_ENV['PORT']}");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => any 9604
PORT=9504 => any 9504`},
	{"-d variables order", `-- Procfile --
web: php -d variables_order=EGPCS s.php
-- s.php --
<?php
$port = $_ENV['PORT'] ?? 9605;
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => any 9605
PORT=9505 => any 9505`},
	{"filter_input and array_merge", `-- Procfile --
web: php s.php
-- s.php --
<?php
$conf = array_merge(['PORT' => 9606, 'HOST' => '127.0.0.1'], getenv());
$s = stream_socket_server("tcp://{$conf['HOST']}:{$conf['PORT']}");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => loopback 9606
PORT=9506 => loopback 9506`},
	{"test and exit", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9801);
-- start.sh exec --
#!/bin/sh
set -e
if [ -z "$DOME_KEY" ]; then
  echo no >&2
  exit 1
fi
exec node server.js
`, ` => exits
DOME_KEY=1 => any 9801`},
	{"insists", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9802);
-- start.sh exec --
#!/bin/sh
: "${DOME_KEY:?must be set}"
exec node server.js
`, ` => exits
DOME_KEY= => exits
DOME_KEY=1 => any 9802`},
	{"insists unset only", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9803);
-- start.sh exec --
#!/bin/sh
: "${DOME_KEY?}"
exec node server.js
`, ` => exits
DOME_KEY= => any 9803`},
	{"set -u", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.argv[2]);
-- start.sh exec --
#!/bin/sh
set -eu
exec node server.js "$PORT"
`, ` => exits
PORT=9814 => any 9814`},
	{"or exit", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9805);
-- start.sh exec --
#!/bin/sh
MODE="${MODE:-live}"
case "$MODE" in
  live|dev) ;;
  *) echo bad; exit 64 ;;
esac
exec node server.js
`, ` => any 9805
MODE=live => any 9805
MODE=odd => exits`},
	{"function die", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9806);
-- start.sh exec --
#!/bin/sh
die() { echo "$1" >&2; exit 1; }
[ -n "$TOKEN" ] || die "no token"
exec node server.js
`, ` => exits
TOKEN=a => any 9806`},
	{"file that is not there", `-- Procfile --
web: ./start.sh
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(9807);
-- start.sh exec --
#!/bin/bash
set -euo pipefail
if [[ -f /etc/sky.conf ]]; then
  source /etc/sky.conf
fi
[[ -n "${SKY_PORT:-}" ]] || SKY_PORT=9807
exec node server.js "$SKY_PORT"
`, ` => any 9807`},
	{"envconfig nested prefix", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/kelseyhightower/envconfig v1.4.0
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"time"

	"github.com/kelseyhightower/envconfig"
)

type HTTP struct {
	Port    uint16        ` + "`" + `default:"9700"` + "`" + `
	Timeout time.Duration ` + "`" + `split_words:"true" default:"5s"` + "`" + `
}

type Config struct {
	HTTP   HTTP
	Public bool
	Tags   []string ` + "`" + `default:"a,b"` + "`" + `
}

func (c Config) Addr() string {
	host := "127.0.0.1"
	if c.Public {
		host = ""
	}
	return fmt.Sprintf("%s:%d", host, c.HTTP.Port)
}

func load() (*Config, error) {
	var c Config
	if err := envconfig.Process("sky", &c); err != nil {
		return nil, fmt.Errorf("environment: %w", err)
	}
	return &c, nil
}

func main() {
	c, err := load()
	if err != nil {
		log.Fatal(err)
	}
	log.Println(c.Tags, c.HTTP.Timeout)
	log.Fatal(http.ListenAndServe(c.Addr(), nil))
}
`, ` => loopback 9700
SKY_HTTP_PORT=9701 => loopback 9701
SKY_HTTP_PORT=x => exits
SKY_HTTP_PORT=9701 SKY_PUBLIC=true => any 9701
SKY_PUBLIC=maybe => exits`},
	{"envconfig required and alt", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/kelseyhightower/envconfig v1.4.0
-- main.go --
package main

import (
	"net"
	"net/http"
	"strconv"

	"github.com/kelseyhightower/envconfig"
)

type base struct {
	Token string ` + "`" + `envconfig:"token" required:"true"` + "`" + `
}

type spec struct {
	base
	Bind  string ` + "`" + `default:"0.0.0.0"` + "`" + `
	Port_ int    ` + "`" + `envconfig:"PORT" default:"9702"` + "`" + `
}

type Spec struct {
	Base base
	Bind string ` + "`" + `default:"0.0.0.0"` + "`" + `
	Port int    ` + "`" + `envconfig:"PORT" default:"9702"` + "`" + `
}

func main() {
	var s Spec
	envconfig.MustProcess("app", &s)
	http.ListenAndServe(net.JoinHostPort(s.Bind, strconv.Itoa(s.Port)), nil)
}
`, ` => exits
TOKEN=a => any 9702
APP_TOKEN=a PORT=9703 => exits
TOKEN=a APP_PORT=9704 PORT=9705 => any 9704`},
	{"caarlos nested", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/caarlos0/env/v11 v11.3.1
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"

	"github.com/caarlos0/env/v11"
)

type Web struct {
	Port  int      ` + "`" + `env:"PORT" envDefault:"9710"` + "`" + `
	Hosts []string ` + "`" + `env:"HOSTS" envDefault:"127.0.0.1" envSeparator:";"` + "`" + `
}

type Config struct {
	Web   Web ` + "`" + `envPrefix:"WEB_"` + "`" + `
	Debug bool ` + "`" + `env:"DEBUG"` + "`" + `
}

func main() {
	cfg := Config{}
	if err := env.Parse(&cfg); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(2)
	}
	http.ListenAndServe(fmt.Sprint(cfg.Web.Hosts[0], ":", cfg.Web.Port), nil)
}
`, ` => loopback 9710
WEB_PORT=9711 => loopback 9711
WEB_PORT= => loopback 9710
WEB_PORT=99999999999 => exits
WEB_HOSTS=0.0.0.0;127.0.0.1 => any 9710`},
	{"caarlos options and not empty", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/caarlos0/env/v11 v11.3.1
-- main.go --
package main

import (
	"log"
	"net/http"
	"strconv"

	"github.com/caarlos0/env/v11"
)

type settings struct {
	Host string ` + "`" + `env:"HOST,notEmpty"` + "`" + `
	Port *int   ` + "`" + `env:"PORT"` + "`" + `
}

func main() {
	var s settings
	err := env.ParseWithOptions(&s, env.Options{Prefix: "SKY_"})
	if err != nil {
		log.Fatal(err)
	}
	port := 9720
	if s.Port != nil {
		port = *s.Port
	}
	log.Fatal(http.ListenAndServe(s.Host+":"+strconv.Itoa(port), nil))
}
`, ` => exits
SKY_HOST=0.0.0.0 => any 9720
SKY_HOST= => exits
SKY_HOST=0.0.0.0 SKY_PORT=9721 => any 9721`},
	{"parse as", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/caarlos0/env/v11 v11.3.1
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"

	"github.com/caarlos0/env/v11"
)

type settings struct {
	Port int ` + "`" + `env:"PORT" envDefault:"9730"` + "`" + `
}

func main() {
	s, err := env.ParseAs[settings]()
	if err != nil {
		log.Fatal(err)
	}
	mux := http.NewServeMux()
	log.Fatal(http.ListenAndServe(fmt.Sprintf(":%d", s.Port), mux))
}
`, ` => any 9730
PORT=9731 => any 9731
PORT=x => exits`},
	{"global viper with flags and oninitialize", `-- Procfile --
web: ./app run --port 9751
-- go.mod --
module a

go 1.26

require (
	github.com/spf13/cobra v1.9.1
	github.com/spf13/viper v1.20.1
)
-- app.toml --
host = "0.0.0.0"
port = 9753
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"

	"github.com/spf13/cobra"
	"github.com/spf13/viper"
)

var cfgFile string

var rootCmd = &cobra.Command{Use: "app"}

var runCmd = &cobra.Command{
	Use:   "run",
	Short: "answer",
	RunE: func(cmd *cobra.Command, args []string) error {
		return http.ListenAndServe(fmt.Sprintf("%s:%d", viper.GetString("host"), viper.GetInt("port")), nil)
	},
}

func init() {
	cobra.OnInitialize(initConfig)
	rootCmd.PersistentFlags().StringVar(&cfgFile, "config", "", "file")
	runCmd.Flags().Int("port", 9750, "port")
	_ = viper.BindPFlag("port", runCmd.Flags().Lookup("port"))
	rootCmd.AddCommand(runCmd)
}

func initConfig() {
	if cfgFile != "" {
		viper.SetConfigFile(cfgFile)
	} else {
		viper.AddConfigPath(".")
		viper.SetConfigName("app")
	}
	viper.SetEnvPrefix("app")
	viper.AutomaticEnv()
	if err := viper.ReadInConfig(); err == nil {
		fmt.Fprintln(os.Stderr, "using", viper.ConfigFileUsed())
	}
}

func main() {
	if err := rootCmd.Execute(); err != nil {
		os.Exit(1)
	}
}
`, ` => any 9751
APP_HOST=127.0.0.1 => loopback 9751
APP_PORT=9752 => any 9751`},
	{"sub keys and missing file", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/spf13/viper v1.20.1
-- main.go --
package main

import (
	"errors"
	"log"
	"net/http"
	"strings"

	"github.com/spf13/viper"
)

type config struct {
	HTTP httpConfig ` + "`" + `mapstructure:"http"` + "`" + `
}

type httpConfig struct {
	Host string
	Port string
}

func main() {
	viper.SetConfigName("settings")
	viper.SetConfigType("yaml")
	viper.AddConfigPath("/etc/sky")
	viper.AddConfigPath("$HOME/.sky")
	viper.AddConfigPath("./configs")
	viper.SetEnvKeyReplacer(strings.NewReplacer(".", "_"))
	viper.AutomaticEnv()
	viper.SetDefault("http", map[string]any{"host": "0.0.0.0", "port": "9760"})
	err := viper.ReadInConfig()
	var missing viper.ConfigFileNotFoundError
	if err != nil && !errors.As(err, &missing) {
		log.Fatal(err)
	}
	var c config
	if err := viper.Unmarshal(&c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(c.HTTP.Host+":"+c.HTTP.Port, nil))
}
`, ` => any 9760
HTTP_PORT=9761 => any 9761
HTTP_PORT= => any 9760`},
	{"bind env names and struct with yaml", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.26

require github.com/spf13/viper v1.20.1
-- configs/settings.yaml --
server:
  host: 127.0.0.1
  port: 9770
  tags: [a, b]
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"strconv"

	"github.com/spf13/viper"
)

type Server struct {
	Host string   ` + "`" + `mapstructure:"host"` + "`" + `
	Port int      ` + "`" + `mapstructure:"port"` + "`" + `
	Tags []string ` + "`" + `mapstructure:"tags"` + "`" + `
}

func main() {
	v := viper.New()
	v.SetConfigFile("configs/settings.yaml")
	if err := v.ReadInConfig(); err != nil {
		log.Fatal(err)
	}
	if err := v.BindEnv("server.port", "SERVER_PORT", "PORT"); err != nil {
		log.Fatal(err)
	}
	var s Server
	if err := v.UnmarshalKey("server", &s); err != nil {
		log.Fatal(err)
	}
	if v.IsSet("server.port") {
		s.Port = v.GetInt("server.port")
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(s.Host, strconv.Itoa(s.Port)), nil))
}
`, ` => loopback 9770
PORT=9771 => loopback 9771
SERVER_PORT=9772 PORT=9771 => loopback 9772
PORT=abc => loopback 0`},
	{"aiohttp literal", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from aiohttp import web
web.run_app(web.Application(), host="0.0.0.0", port=int(os.environ["PORT"]))
`, `PORT=65536 => exits
PORT=70000 => exits`},
	{"aiohttp none", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from aiohttp import web
web.run_app(web.Application(), port=int(os.environ["PORT"]))
`, `PORT=70000 => any 4464`},
	{"aiohttp localhost", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from aiohttp import web
web.run_app(web.Application(), host="localhost", port=int(os.environ["PORT"]))
`, `PORT=70000 => loopback 4464`},
	{"asyncio none", `-- Procfile --
web: python3 a.py
-- a.py --
import os, asyncio
async def main():
    s = await asyncio.start_server(lambda r, w: w.close(), None, int(os.environ["PORT"]))
    await s.serve_forever()
asyncio.run(main())
`, `PORT=70000 => any 4464`},
	{"asyncio literal", `-- Procfile --
web: python3 a.py
-- a.py --
import os, asyncio
async def main():
    s = await asyncio.start_server(lambda r, w: w.close(), "127.0.0.1", int(os.environ["PORT"]))
    await s.serve_forever()
asyncio.run(main())
`, `PORT=70000 => exits`},
	{"uvicorn localhost", `-- Procfile --
web: python3 a.py
-- a.py --
import os, uvicorn
async def app(s, r, c): pass
uvicorn.run(app, host="localhost", port=int(os.environ["PORT"]))
`, `PORT=70000 => loopback 4464`},
	{"tornado literal", `-- Procfile --
web: python3 a.py
-- a.py --
import os, asyncio, tornado.web
async def main():
    tornado.web.Application([]).listen(int(os.environ["PORT"]), "127.0.0.1")
    await asyncio.Event().wait()
asyncio.run(main())
`, `PORT=70000 => loopback 4464`},
	{"names", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from http.server import *
HTTPServer((os.environ["HOST"], 9876), BaseHTTPRequestHandler).serve_forever()
`, `HOST=123 => exits
HOST=0 => any 9876`},
	{"waitress unix socket", `-- Procfile --
web: python3 app.py
-- app.py --
from waitress import serve
def app(e, s):
    return []
serve(app, unix_socket="/tmp/wa.sock")
`, ` => unix:wa.sock`},
	{"asyncio sock", `-- Procfile --
web: python3 app.py
-- app.py --
import asyncio, socket
async def main():
    s = socket.create_server(("127.0.0.1", 9994))
    server = await asyncio.start_server(lambda r, w: w.close(), sock=s)
    await server.serve_forever()
asyncio.run(main())
`, ` => loopback 9994`},
	{"sirv default", `-- Procfile --
web: sirv public
-- public/index.html --
x
`, ` => loopback 8080
PORT=9881 => loopback 9881
HOST=0.0.0.0 => any 8080`},
	{"sirv flags and env", `-- Procfile --
web: sirv public --port 9882 --host 0.0.0.0 --single
-- public/index.html --
x
`, ` => any 9882
PORT=9883 HOST=127.0.0.1 => loopback 9883`},
}

func TestSettled(t *testing.T) {
	t.Parallel()
	agree(t, settled)
}
