package check_test

import "testing"

// loaded are programs that a server loads, that a script starts, that read their words by a
// parser, or that end by an error of their own: what each did was read from the kernel.
var loaded = []told{
	{"socketserver with namedtuple settings", `-- Procfile --
web: python3 tcpd.py
-- tcpd.py --
import os
import socketserver
from typing import NamedTuple


class Address(NamedTuple):
    host: str
    port: int

    @classmethod
    def parse(cls, text, default_host="127.0.0.1"):
        host, _, port = text.rpartition(":")
        return cls(host or default_host, int(port))


class Handler(socketserver.StreamRequestHandler):
    def handle(self):
        self.wfile.write(b"x")


class Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True


if __name__ == "__main__":
    with Server(Address.parse(os.getenv("TCPD", "localhost:4315")), Handler) as s:
        s.serve_forever()
`, ` => loopback 4315
TCPD=0.0.0.0:8315 => any 8315
TCPD=:8315 => loopback 8315`},
	{"json config with defaults and methods", `-- Procfile --
web: ./app config.json
-- go.mod --
module dome

go 1.22
-- config.json --
{"http": {"port": 4353}, "name": "dome"}
-- main.go --
package main

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
)

type HTTP struct {
	Host string ` + "`" + `json:"host"` + "`" + `
	Port int    ` + "`" + `json:"port,omitempty"` + "`" + `
}

type Config struct {
	HTTP HTTP   ` + "`" + `json:"http"` + "`" + `
	Name string ` + "`" + `json:"name"` + "`" + `
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

func main() {
	cfg := Config{HTTP: HTTP{Host: "0.0.0.0", Port: 80}}
	if len(os.Args) > 1 {
		f := must(os.Open(os.Args[1]))
		defer f.Close()
		if err := json.NewDecoder(f).Decode(&cfg); err != nil {
			panic(err)
		}
	}
	if h := os.Getenv("CONFIG_HOST"); h != "" {
		cfg.HTTP.Host = h
	}
	if p := os.Getenv("PORT"); p != "" {
		fmt.Sscanf(p, "%d", &cfg.HTTP.Port)
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", cfg.HTTP.Host, cfg.HTTP.Port), nil)
}
`, ` => any 4353
PORT=8353 => any 8353
CONFIG_HOST=127.0.0.1 => loopback 4353`},
	{"rust struct config and match", `-- Procfile --
web: ./app
-- Cargo.toml --
[package]
name = "app"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::env;
use std::io::{self, Write};
use std::net::{IpAddr, SocketAddr, TcpListener};

struct Config {
    host: IpAddr,
    port: u16,
}

impl Config {
    fn from_env() -> Result<Self, String> {
        let production = matches!(env::var("APP_ENV").as_deref(), Ok("production"));
        let host = env::var("BIND").unwrap_or_else(|_| if production { "0.0.0.0".into() } else { "127.0.0.1".into() });
        let port = match env::var("PORT") {
            Ok(p) => p.parse::<u16>().map_err(|e| e.to_string())?,
            Err(_) => 4402,
        };
        Ok(Config { host: host.parse().map_err(|_| format!("bad host {host}"))?, port })
    }

    fn addr(&self) -> SocketAddr {
        SocketAddr::new(self.host, self.port)
    }
}

fn main() -> io::Result<()> {
    let config = Config::from_env().expect("configuration");
    let l = TcpListener::bind(config.addr())?;
    loop {
        let (mut s, _) = l.accept()?;
        s.write_all(b"x")?;
    }
}
`, ` => loopback 4402
BIND=0.0.0.0 PORT=8402 => any 8402
APP_ENV=production => any 4402`},
	{"php swoole free loop with options", `-- Procfile --
web: php -d display_errors=1 app.php --port=4431 --host 0.0.0.0
-- app.php --
<?php
require __DIR__ . '/src/Options.php';
require __DIR__ . '/src/Server.php';

use Sky\Options;
use Sky\Server;

$options = Options::parse($argv);
(new Server($options))->serve();
-- src/Options.php --
<?php
namespace Sky;

class Options
{
    protected array $values = ['host' => '127.0.0.1', 'port' => '8000'];

    public static function parse(array $argv): static
    {
        $self = new static();
        for ($i = 1; $i < count($argv); $i++) {
            if (preg_match('/^--(\w+)(?:=(.*))?$/', $argv[$i], $m)) {
                $self->values[$m[1]] = $m[2] ?? $argv[++$i] ?? '';
            }
        }
        if (($port = getenv('PORT')) !== false && ctype_digit($port)) {
            $self->values['port'] = $port;
        }
        if (filter_var(getenv('APP_DEBUG'), FILTER_VALIDATE_BOOLEAN)) {
            $self->values['host'] = 'localhost';
        }
        return $self;
    }

    public function __get(string $name): string
    {
        return $this->values[$name];
    }
}
-- src/Server.php --
<?php
namespace Sky;

final class Server
{
    private $socket;

    public function __construct(private Options $options)
    {
    }

    public function serve(): never
    {
        $this->socket = \stream_socket_server("tcp://{$this->options->host}:{$this->options->port}", $no, $why);
        if (!$this->socket) {
            throw new \RuntimeException($why, $no);
        }
        for (;;) {
            $c = @\stream_socket_accept($this->socket, 3600);
            if ($c) {
                \fclose($c);
            }
        }
    }
}
`, ` => any 4431
PORT=8431 => any 8431
APP_DEBUG=1 => loopback 4431`},
	{"options in a variable", `-- Procfile --
web: sh run.sh
-- run.sh exec --
#!/bin/sh
OPTS="--host 0.0.0.0 --port ${PORT:-4501}"
exec python3 -m uvicorn sky:app $OPTS
-- sky.py --
async def app(scope, receive, send):
    pass
`, ` => any 4501
PORT=8501 => any 8501`},
	{"options array in bash", `-- Procfile --
web: bash run.sh
-- run.sh exec --
#!/usr/bin/env bash
set -euo pipefail
args=(--port "${PORT:-4502}")
if [[ -n "${BIND_ALL:-}" ]]; then
  args+=(--host 0.0.0.0)
fi
exec python3 -m uvicorn sky:app "${args[@]}"
-- sky.py --
async def app(scope, receive, send):
    pass
`, ` => loopback 4502
PORT=8502 => loopback 8502
BIND_ALL=1 => any 4502`},
	{"case on environment", `-- Procfile --
web: sh start.sh
-- start.sh exec --
#!/bin/sh
case "$APP_ENV" in
  prod|production) HOST=0.0.0.0 ;;
  stag*) HOST=0.0.0.0; PORT=${PORT:-4604} ;;
  *) HOST=127.0.0.1 ;;
esac
exec python3 -m http.server --bind "$HOST" "${PORT:-4504}"
`, ` => loopback 4504
APP_ENV=production PORT=8504 => any 8504
APP_ENV=staging => any 4604`},
	{"env command and exec chain", `-- Procfile --
web: env HOST=0.0.0.0 PORT="${PORT:-4507}" node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT, process.env.HOST);
`, ` => any 4507
PORT=8507 => any 8507`},
	{"uvicorn own variables", `-- Procfile --
web: UVICORN_PORT=$PORT UVICORN_HOST=0.0.0.0 uvicorn sky:app
-- sky.py --
async def app(scope, receive, send):
    pass
`, `PORT=8510 => any 8510
PORT= => any 8000`},
	{"bun port", `-- Procfile --
web: BUN_PORT=${PORT:-4512} bun run index.ts
-- package.json --
{"name":"a"}
-- index.ts --
Bun.serve({ fetch: () => new Response("x") });
`, ` => any 4512
PORT=8512 => any 8512`},
	{"deno serve address", `-- Procfile --
web: DENO_SERVE_ADDRESS=tcp:0.0.0.0:${PORT:-4513} deno run -A main.ts
-- main.ts --
Deno.serve(() => new Response("x"));
`, ` => any 4513
PORT=8513 => any 8513`},
	{"test for number", `-- Procfile --
web: sh start.sh
-- start.sh exec --
#!/bin/sh
case "$PORT" in
  ''|*[!0-9]*) PORT=4517 ;;
esac
exec python3 -m http.server $PORT
`, ` => any 4517
PORT=8517 => any 8517
PORT=abc => any 4517`},
	{"cut from url", `-- Procfile --
web: sh start.sh
-- start.sh exec --
#!/bin/sh
LISTEN=${LISTEN:-0.0.0.0:4518}
HOST=${LISTEN%:*}
PORT=${LISTEN##*:}
exec python3 -m http.server --bind $HOST $PORT
`, ` => any 4518
LISTEN=127.0.0.1:8518 => loopback 8518`},
	{"java tool options", `-- Procfile --
web: JAVA_TOOL_OPTIONS="-Dport=${PORT:-4529}" java Server.java
-- Server.java --
public class Server {
    public static void main(String[] a) throws Exception {
        var s = new java.net.ServerSocket(Integer.getInteger("port", 9000));
        while (true) s.accept().close();
    }
}
`, ` => any 4529
PORT=8529 => any 8529`},
	{"node options env", `-- Procfile --
web: NODE_OPTIONS="--require ./pre.js" node server.js
-- package.json --
{"name":"a"}
-- pre.js --
process.env.PORT ||= '4530';
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT);
`, ` => any 4530
PORT=8530 => any 8530`},
	{"python inline", `-- Procfile --
web: python3 -c "import os, http.server as h; h.HTTPServer(('0.0.0.0', int(os.environ.get('PORT', 4532))), h.SimpleHTTPRequestHandler).serve_forever()"
-- index.html --
x
`, ` => any 4532
PORT=8532 => any 8532`},
	{"node inline", `-- Procfile --
web: node -e "require('http').createServer((q,r)=>r.end('x')).listen(process.env.PORT||4533)"
-- package.json --
{"name":"a"}
`, ` => any 4533
PORT=8533 => any 8533`},
	{"ruby run httpd", `-- Procfile --
web: ruby -run -e httpd public -p ${PORT:-4535} --bind-address=127.0.0.1
-- public/index.html --
x
`, ` => loopback 4535
PORT=8535 => loopback 8535`},
	{"class with static from and inheritance", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- config.js --
class Base {
  static defaults = { port: 4708, host: '0.0.0.0' };
  constructor(o) { Object.assign(this, new.target.defaults, o); }
  static fromEnv(env) {
    const o = {};
    for (const k of Object.keys(this.defaults)) {
      const v = env[k.toUpperCase()];
      if (v !== undefined) o[k] = typeof this.defaults[k] === 'number' ? +v : v;
    }
    return new this(o);
  }
}
class Web extends Base {
  static defaults = { ...Base.defaults, backlog: 64 };
  listen(server) { server.listen(this.port, this.host, this.backlog); return server; }
}
module.exports = { Web };
-- app.js --
const { Web } = require('./config');
Web.fromEnv(process.env).listen(require('http').createServer((q, r) => r.end()));
`, ` => any 4708
PORT=8708 => any 8708
HOST=127.0.0.1 PORT=8708 => loopback 8708`},
	{"uvicorn run with env dict and workers none", `-- Procfile --
web: python3 serve.py
-- requirements.txt --
uvicorn
-- serve.py --
import os
import uvicorn


async def app(scope, receive, send):
    pass


kw = dict(log_level="warning")
if p := os.environ.get("PORT"):
    kw |= {"port": int(p), "host": "0.0.0.0"}
uvicorn.run("serve:app", **kw)
`, ` => exits
UVICORN_PORT=8730 => exits
PORT=8730 => exits`},
	{"java interface default and optional chain", `-- Procfile --
web: java -cp out dome.App
-- src/dome/Env.java --
package dome;

import java.util.Optional;
import java.util.function.Function;

interface Env {
    String get(String name);

    default Optional<String> find(String name) { return Optional.ofNullable(get(name)).filter(s -> !s.isBlank()); }

    default <T> T as(String name, Function<String, T> f, T fallback) {
        try { return find(name).map(f).orElse(fallback); } catch (NumberFormatException e) { return fallback; }
    }
}
-- src/dome/App.java --
package dome;

import java.net.*;

public class App {
    public static void main(String[] args) throws Exception {
        Env env = System::getenv;
        int port = env.as("DOME_PORT", Integer::parseInt, 4771);
        var server = new ServerSocket(port, 0, InetAddress.getByName(env.find("DOME_HOST").orElse("0.0.0.0")));
        while (true) server.accept().close();
    }
}
`, ` => any 4771
DOME_PORT=8771 => any 8771
DOME_PORT=bad => any 4771`},
	{"bun with default export object built", `-- Procfile --
web: bun run app.ts
-- package.json --
{"name":"a"}
-- app.ts --
const port = process.env.WEB_PORT;
const handler = { fetch: () => new Response("x") };
export default port ? { ...handler, port } : { ...handler, hostname: "127.0.0.1", port: 4792 };
`, ` => loopback 4792
WEB_PORT=8792 => any 8792`},
	{"gunicorn needs a variable", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:${PORT:-4801}
-- requirements.txt --
flask
gunicorn
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
app.secret_key = os.environ["API_KEY"]
`, ` => exits
API_KEY=x PORT=8801 => any 8801`},
	{"uvicorn needs settings", `-- Procfile --
web: uvicorn app:app --port ${PORT:-4802}
-- requirements.txt --
fastapi
uvicorn
pydantic
-- app.py --
from fastapi import FastAPI
from pydantic import BaseSettings


class Settings(BaseSettings):
    database_url: str


settings = Settings()
app = FastAPI()
`, ` => exits
DATABASE_URL=x PORT=8802 => loopback 8802`},
	{"uvicorn raises by hand", `-- Procfile --
web: uvicorn app:app --port ${PORT:-4803}
-- requirements.txt --
fastapi
uvicorn
-- app.py --
import os
import sys
from fastapi import FastAPI

if not os.getenv("TOKEN"):
    sys.exit("TOKEN is needed")
app = FastAPI()
`, ` => exits
TOKEN=x => loopback 4803`},
	{"puma with app that needs", `-- Procfile --
web: puma -p ${PORT:-4804}
-- Gemfile --
gem "puma"
-- config.ru --
KEY = ENV.fetch("NIGHT_KEY")
run ->(e) { [200, {}, [KEY]] }
`, ` => exits
NIGHT_KEY=x => any 4804`},
	{"rackup with app that aborts", `-- Procfile --
web: rackup -s webrick -p ${PORT:-4805}
-- Gemfile --
gem "rack"
gem "webrick"
-- config.ru --
abort "no key" unless ENV["NIGHT_KEY"]
run ->(e) { [200, {}, ["x"]] }
`, ` => exits
NIGHT_KEY=x => loopback 4805`},
	{"waitress serve", `-- Procfile --
web: waitress-serve --port=${PORT:-4806} app:app
-- requirements.txt --
waitress
-- app.py --
import os
KEY = os.environ["KEY"]


def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]
`, ` => exits
KEY=x => any 4806`},
	{"hypercorn", `-- Procfile --
web: hypercorn app:app -b 0.0.0.0:4807
-- requirements.txt --
hypercorn
-- app.py --
import os
KEY = os.environ["KEY"]


async def app(scope, receive, send):
    if scope["type"] == "lifespan":
        while True:
            m = await receive()
            await send({"type": m["type"] + ".complete"})
            if m["type"] == "lifespan.shutdown":
                return
`, ` => exits
KEY=x => any 4807`},
	{"flask run with app that needs", `-- Procfile --
web: flask --app app run -p 4808
-- requirements.txt --
flask
-- app.py --
import os
from flask import Flask
KEY = os.environ["KEY"]
app = Flask(__name__)
`, ` => exits
KEY=x => loopback 4808`},
	{"django wsgi with settings that need", `-- Procfile --
web: gunicorn site1.wsgi -b 0.0.0.0:4809
-- requirements.txt --
django
gunicorn
-- manage.py --
import os, sys
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "site1.settings")
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- site1/__init__.py --
-- site1/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "site1.settings")
application = get_wsgi_application()
-- site1/settings.py --
import os
SECRET_KEY = os.environ["SECRET_KEY"]
ALLOWED_HOSTS = ["*"]
ROOT_URLCONF = "site1.urls"
INSTALLED_APPS = []
-- site1/urls.py --
urlpatterns = []
`, ` => exits
SECRET_KEY=x => any 4809`},
	{"daphne", `-- Procfile --
web: daphne -p 4810 app:app
-- requirements.txt --
daphne
-- app.py --
import os
KEY = os.environ["KEY"]


async def app(scope, receive, send):
    pass
`, ` => exits
KEY=x => loopback 4810`},
	{"gunicorn factory with check", `-- Procfile --
web: gunicorn "app:create_app()" -b 127.0.0.1:4811
-- requirements.txt --
flask
gunicorn
-- app.py --
import os
from flask import Flask


def create_app():
    app = Flask(__name__)
    if os.environ.get("MODE") not in ("live", "test"):
        raise RuntimeError("MODE must be live or test")
    return app
`, ` => exits
MODE=live => loopback 4811`},
	{"thin", `-- Procfile --
web: thin start -p 4812 -R config.ru
-- Gemfile --
gem "thin"
-- config.ru --
raise "KEY" unless ENV.key?("KEY")
run ->(e) { [200, {}, ["x"]] }
`, ` => exits
KEY=x => any 4812`},
	{"unicorn", `-- Procfile --
web: unicorn -p 4813 config.ru
-- Gemfile --
gem "unicorn"
-- config.ru --
raise "KEY" unless ENV.key?("KEY")
run ->(e) { [200, {}, ["x"]] }
`, ` => any 4813
KEY=x => any 4813`},
	{"deno serve", `-- Procfile --
web: deno serve -A --port 4814 main.ts
-- main.ts --
const key = Deno.env.get("KEY");
if (!key) throw new Error("KEY");
export default { fetch: () => new Response(key) };
`, ` => exits
KEY=x => any 4814`},
	{"bun default export", `-- Procfile --
web: bun run main.ts
-- package.json --
{"name":"a"}
-- main.ts --
const key = process.env.KEY;
if (!key) { console.error("KEY"); process.exit(1); }
export default { port: 4815, fetch: () => new Response(key) };
`, ` => exits
KEY=x => any 4815`},
	{"gunicorn preload", `-- Procfile --
web: gunicorn --preload app:app -b 0.0.0.0:4816
-- requirements.txt --
gunicorn
-- app.py --
import os
KEY = os.environ["KEY"]


def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]
`, ` => exits
KEY=x => any 4816`},
	{"sinatra needs", `-- Procfile --
web: ruby app.rb
-- Gemfile --
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"
set :port, 4817
set :key, ENV.fetch("KEY")
get("/") { "x" }
`, ` => exits
KEY=x => loopback 4817`},
	{"require in a module", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","type":"module"}
-- app.js --
const http = require('http');
http.createServer((q, r) => r.end()).listen(process.env.PORT || 4901);
`, ` => exits`},
	{"import in a script", `-- Procfile --
web: node app.cjs
-- package.json --
{"name":"a"}
-- app.cjs --
import http from 'http';
http.createServer((q, r) => r.end()).listen(process.env.PORT || 4902);
`, ` => exits`},
	{"same port twice", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- app.js --
const http = require('http');
http.createServer((q, r) => r.end()).listen(process.env.PORT || 4904);
http.createServer((q, r) => r.end()).listen(process.env.ADMIN_PORT || 4904);
`, ` => exits
ADMIN_PORT=4994 => any 4904 & any 4994`},
	{"broken json", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- conf.json --
{"port": 4906,}
-- app.js --
const fs = require('fs');
const conf = JSON.parse(fs.readFileSync('./conf.json', 'utf8'));
require('http').createServer((q, r) => r.end()).listen(conf.port);
`, ` => exits`},
	{"broken json caught", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- conf.json --
{"port": 4907,}
-- app.js --
let conf = { port: 4917 };
try { conf = require('./conf.json'); } catch (e) { console.error(e.message); }
require('http').createServer((q, r) => r.end()).listen(conf.port);
`, ` => any 4917`},
	{"named export missing", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"a","type":"module"}
-- conf.mjs --
export const prt = 4911;
-- app.mjs --
import http from 'node:http';
import { port } from './conf.mjs';
http.createServer((q, r) => r.end()).listen(port);
`, ` => exits`},
	{"const assigned again", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- app.js --
const port = 4912;
if (process.env.PORT) port = process.env.PORT;
require('http').createServer((q, r) => r.end()).listen(port);
`, ` => any 4912
PORT=8912 => exits`},
	{"import of what is not there", `-- Procfile --
web: python3 app.py
-- app.py --
from http.server import HTTPServer, BaseHTTPRequestHandler
from settings import PORT, HOST
HTTPServer((HOST, PORT), BaseHTTPRequestHandler).serve_forever()
-- settings.py --
PORT = 4921
`, ` => exits`},
	{"same port twice too", `-- Procfile --
web: python3 app.py
-- app.py --
import os
import socket
a = socket.create_server(("0.0.0.0", 4922))
b = socket.create_server(("127.0.0.1", int(os.environ.get("SECOND", 4922))))
while True:
    a.accept()
`, ` => exits
SECOND=4932 => any 4922 & loopback 4932`},
	{"name error in a branch", `-- Procfile --
web: python3 app.py
-- app.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
if os.environ.get("MODE"):
    port = 4923
HTTPServer(("", port), BaseHTTPRequestHandler).serve_forever()
`, ` => exits
MODE=x => any 4923`},
	{"daemon thread and main ends", `-- Procfile --
web: python3 app.py
-- app.py --
import os
import threading
from http.server import HTTPServer, BaseHTTPRequestHandler
s = HTTPServer(("", 4926), BaseHTTPRequestHandler)
t = threading.Thread(target=s.serve_forever, daemon=True)
t.start()
if os.environ.get("WAIT"):
    t.join()
`, ` => exits
WAIT=1 => any 4926`},
	{"assert on setting", `-- Procfile --
web: python3 app.py
-- app.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
port = int(os.environ.get("PORT", 4931))
assert port > 1024, "needs a high port"
HTTPServer(("", port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 4931
PORT=8931 => any 8931
PORT=80 => exits`},
	{"bind twice", `-- Procfile --
web: java App.java
-- App.java --
import java.net.ServerSocket;
public class App {
    public static void main(String[] a) throws Exception {
        ServerSocket s = new ServerSocket(4973);
        String o = System.getenv("OTHER");
        ServerSocket t = new ServerSocket(o == null ? 4973 : Integer.parseInt(o));
        while (true) s.accept().close();
    }
}
`, ` => exits
OTHER=4983 => any 4973 & any 4983`},
	{"argparse choices and count", `-- Procfile --
web: python3 app.py --env prod -vv --port=5101
-- app.py --
import argparse
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

p = argparse.ArgumentParser()
p.add_argument("--env", choices=["dev", "prod"], default="dev")
p.add_argument("-v", "--verbose", action="count", default=0)
p.add_argument("--port", type=int)
p.add_argument("--host")
a = p.parse_args()
hosts = {"dev": "127.0.0.1", "prod": "0.0.0.0"}
port = a.port if a.port is not None else int(os.environ.get("PORT", 5102))
HTTPServer((a.host or hosts[a.env], port + a.verbose), BaseHTTPRequestHandler).serve_forever()
`, ` => any 5103
PORT=8101 => any 5103`},
	{"argparse positional nargs", `-- Procfile --
web: python3 app.py 127.0.0.1 5103
-- app.py --
import argparse
import os
import socket

p = argparse.ArgumentParser()
p.add_argument("host", nargs="?", default="0.0.0.0")
p.add_argument("port", nargs="?", type=int, default=9000)
ns = p.parse_args()
s = socket.create_server((os.getenv("BIND", ns.host), ns.port))
while True:
    s.accept()[0].close()
`, ` => loopback 5103
BIND=0.0.0.0 => any 5103`},
	{"argparse abbreviations and dest", `-- Procfile --
web: python3 app.py --listen-p 5104 --no-reload
-- app.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler

p = argparse.ArgumentParser()
p.add_argument("--listen-port", dest="port", type=int, default=9000)
p.add_argument("--reload", action=argparse.BooleanOptionalAction, default=True)
o = p.parse_args()
HTTPServer(("127.0.0.1" if o.reload else "", o.port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 5104`},
	{"argparse bad choice exits", `-- Procfile --
web: python3 app.py --env ${APP_ENV:-staging}
-- app.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler

p = argparse.ArgumentParser()
p.add_argument("--env", choices=("dev", "prod"), required=True)
p.add_argument("--port", type=int, default=5105)
o = p.parse_args()
HTTPServer(("", o.port), BaseHTTPRequestHandler).serve_forever()
`, ` => exits
APP_ENV=prod => any 5105`},
	{"argparse type function", `-- Procfile --
web: python3 app.py --bind ${BIND:-127.0.0.1:5106}
-- app.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler


def address(text):
    host, sep, port = text.rpartition(":")
    if not sep:
        raise argparse.ArgumentTypeError("HOST:PORT is wanted")
    return host, int(port)


p = argparse.ArgumentParser()
p.add_argument("--bind", type=address, metavar="HOST:PORT")
HTTPServer(p.parse_args().bind, BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 5106
BIND=:8106 => any 8106
BIND=nope => exits`},
	{"argparse groups and parents", `-- Procfile --
web: python3 app.py run --port 5107
-- app.py --
import argparse
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

common = argparse.ArgumentParser(add_help=False)
g = common.add_argument_group("network")
g.add_argument("--host", default="0.0.0.0")
g.add_argument("--port", type=int, default=9000)
parser = argparse.ArgumentParser()
commands = parser.add_subparsers(dest="command")
run = commands.add_parser("run", parents=[common])
check = commands.add_parser("check", parents=[common])


def main(argv=None):
    args = parser.parse_args(argv)
    if args.command == "check":
        return 0
    host = "127.0.0.1" if os.environ.get("DEBUG") else args.host
    HTTPServer((host, args.port), BaseHTTPRequestHandler).serve_forever()


if __name__ == "__main__":
    raise SystemExit(main())
`, ` => any 5107
DEBUG=1 => loopback 5107`},
	{"argparse known args and set defaults", `-- Procfile --
web: python3 app.py --port 5108 --extra 1
-- app.py --
import argparse
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

p = argparse.ArgumentParser(allow_abbrev=False)
p.add_argument("--port", type=int, default=9000)
p.add_argument("--host")
p.set_defaults(host="127.0.0.1", port=int(os.environ.get("PORT", 5118)))
args, rest = p.parse_known_args()
HTTPServer((args.host, args.port + len(rest)), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 5110
PORT=8108 => loopback 5110`},
	{"argparse unknown option", `-- Procfile --
web: python3 app.py --prot 5109
-- app.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler

p = argparse.ArgumentParser()
p.add_argument("--port", type=int, default=9000)
HTTPServer(("", p.parse_args().port), BaseHTTPRequestHandler).serve_forever()
`, ` => exits`},
	{"argparse vars and namespace", `-- Procfile --
web: python3 app.py -p5110
-- app.py --
import argparse
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

parser = argparse.ArgumentParser(formatter_class=argparse.ArgumentDefaultsHelpFormatter)
parser.add_argument("-p", "--port", type=int, default=9000, help="port")
parser.add_argument("-b", "--bind", default=argparse.SUPPRESS)
opts = vars(parser.parse_args())
opts.setdefault("bind", os.environ.get("HOST", "0.0.0.0"))
HTTPServer((opts["bind"], opts["port"]), BaseHTTPRequestHandler).serve_forever()
`, ` => any 5110
HOST=127.0.0.1 => loopback 5110`},
	{"go flags of all kinds", `-- Procfile --
web: ./app -port 5141 -host= -tls=false sky
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"flag"
	"fmt"
	"net/http"
	"os"
)

type config struct {
	port int
	host string
	tls  bool
}

func main() {
	var c config
	flag.IntVar(&c.port, "port", 9000, "port")
	flag.StringVar(&c.host, "host", "127.0.0.1", "host")
	flag.BoolVar(&c.tls, "tls", true, "tls")
	flag.Parse()
	if v := os.Getenv("PORT"); v != "" {
		flag.Set("port", v)
	}
	if c.tls {
		c.port += 443
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", c.host, c.port+flag.NArg()), nil)
}
`, ` => any 5142
PORT=8141 => any 8142`},
	{"go flagset per command", `-- Procfile --
web: ./app serve --addr 127.0.0.1:5142
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"flag"
	"fmt"
	"net/http"
	"os"
)

func main() {
	if len(os.Args) < 2 {
		fmt.Println("serve")
		os.Exit(2)
	}
	switch os.Args[1] {
	case "serve":
		fs := flag.NewFlagSet("serve", flag.ExitOnError)
		addr := fs.String("addr", ":9000", "address")
		fs.Parse(os.Args[2:])
		if v, ok := os.LookupEnv("ADDR"); ok {
			*addr = v
		}
		if err := http.ListenAndServe(*addr, nil); err != nil {
			panic(err)
		}
	default:
		os.Exit(2)
	}
}
`, ` => loopback 5142
ADDR=:8142 => any 8142`},
	{"go bad flag", `-- Procfile --
web: ./app -prot 5143
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"flag"
	"net/http"
)

func main() {
	addr := flag.String("addr", ":9000", "address")
	flag.Parse()
	http.ListenAndServe(*addr, nil)
}
`, ` => exits`},
	{"flask application factory with config file and env", `-- Procfile --
web: python3 run.py
-- requirements.txt --
flask
-- default.json --
{"HOST": "127.0.0.1", "PORT": 5211}
-- live.json --
{"HOST": "0.0.0.0"}
-- run.py --
import json
import os
from dome import create_app

app = create_app()
app.config.from_file(os.environ.get("DOME_CONFIG", "default.json"), load=json.load)
if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=int(os.environ.get("PORT") or app.config["PORT"]))
-- dome/__init__.py --
from flask import Flask


def create_app():
    app = Flask(__name__, root_path=".")
    app.config["PORT"] = 5999

    @app.get("/")
    def home():
        return "open"

    return app
`, ` => loopback 5211
DOME_CONFIG=live.json => any 5999
DOME_CONFIG=live.json PORT=8211 => any 8211`},
	{"asyncio unix or tcp by setting", `-- Procfile --
web: python3 app.py
-- app.py --
import asyncio
import os


async def handle(reader, writer):
    writer.close()


async def main():
    if path := os.environ.get("SOCKET"):
        server = await asyncio.start_unix_server(handle, path)
    else:
        server = await asyncio.start_server(handle, "127.0.0.1", 5319)
    async with server:
        await server.serve_forever()


asyncio.run(main())
`, ` => loopback 5319
SOCKET=./dome.sock => unix:dome.sock`},
	{"runserver with settings that need", `-- Procfile --
web: python3 manage.py runserver 0.0.0.0:5401 --noreload
-- requirements.txt --
django
-- manage.py exec --
#!/usr/bin/env python
import os
import sys


def main():
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "obs.settings")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()
-- obs/__init__.py --
-- obs/settings.py --
import os
SECRET_KEY = os.environ["SECRET_KEY"]
DEBUG = True
ROOT_URLCONF = "obs.urls"
DATABASES = {}
INSTALLED_APPS = []
-- obs/urls.py --
urlpatterns = []
`, ` => exits
SECRET_KEY=x => any 5401`},
	{"wsgi by settings package per stage", `-- Procfile --
web: gunicorn obs.wsgi:application -b 0.0.0.0:5402
-- requirements.txt --
django
gunicorn
-- manage.py --
import os, sys
from django.core.management import execute_from_command_line
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "obs.settings.dev")
execute_from_command_line(sys.argv)
-- obs/__init__.py --
-- obs/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "obs.settings." + os.environ.get("STAGE", "dev"))
application = get_wsgi_application()
-- obs/settings/__init__.py --
-- obs/settings/base.py --
import os
from pathlib import Path
BASE_DIR = Path(__file__).resolve().parent.parent.parent
SECRET_KEY = "local"
ROOT_URLCONF = "obs.urls"
INSTALLED_APPS = []
ALLOWED_HOSTS = ["*"]
-- obs/settings/dev.py --
from .base import *
DEBUG = True
-- obs/settings/prod.py --
from .base import *
SECRET_KEY = os.environ["SECRET_KEY"]
-- obs/urls.py --
urlpatterns = []
`, `STAGE=prod SECRET_KEY=x => any 5402
STAGE=prod => exits
STAGE=nope => exits`},
	{"flask factory that reads needed config", `-- Procfile --
web: gunicorn "dome:create_app()" --bind 127.0.0.1:5403
-- requirements.txt --
flask
gunicorn
-- dome/__init__.py --
from flask import Flask
from .config import Config


def create_app(config=None):
    app = Flask(__name__)
    app.config.from_object(config or Config())
    from . import views
    app.register_blueprint(views.bp)
    return app
-- dome/config.py --
import os


class Config:
    def __init__(self):
        self.SQLALCHEMY_DATABASE_URI = os.environ["DATABASE_URL"]
-- dome/views.py --
from flask import Blueprint
bp = Blueprint("views", __name__)


@bp.get("/")
def index():
    return "x"
`, ` => exits
DATABASE_URL=postgres://x => loopback 5403`},
	{"fastapi with settings cached and dependency", `-- Procfile --
web: uvicorn service.main:app --port 5404
-- requirements.txt --
fastapi
uvicorn
pydantic
-- service/__init__.py --
-- service/settings.py --
from functools import lru_cache
from pydantic import BaseSettings


class Settings(BaseSettings):
    api_token: str


@lru_cache()
def get_settings() -> Settings:
    return Settings()
-- service/main.py --
from fastapi import Depends, FastAPI
from .settings import Settings, get_settings

app = FastAPI()


@app.get("/")
def root(settings: Settings = Depends(get_settings)):
    return {"token": bool(settings.api_token)}
`, ` => loopback 5404
API_TOKEN=x => loopback 5404`},
	{"lifespan that needs does not end at import", `-- Procfile --
web: uvicorn app:app --port 5405
-- requirements.txt --
fastapi
uvicorn
-- app.py --
import os
from fastapi import FastAPI

app = FastAPI()


@app.get("/")
def root():
    return {"key": os.environ["KEY"]}
`, ` => loopback 5405`},
	{"logging config dict and extensions", `-- Procfile --
web: gunicorn app:app -b 127.0.0.1:5406
-- requirements.txt --
flask
gunicorn
-- app.py --
import logging.config
from logging import getLogger
from flask import Flask, jsonify
from werkzeug.middleware.proxy_fix import ProxyFix

logging.config.dictConfig({"version": 1, "handlers": {"h": {"class": "logging.StreamHandler"}}, "root": {"handlers": ["h"]}})
log = getLogger(__name__)
app = Flask(__name__)
app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1)
app.json.sort_keys = False
log.info("ready %s", app.name)


@app.errorhandler(404)
def missing(error):
    return jsonify(error=str(error)), 404
`, ` => loopback 5406`},
	{"puma with initializers", `-- Procfile --
web: puma -p 5407 -e production
-- Gemfile --
gem "puma"
gem "rack"
-- config.ru --
$LOAD_PATH.unshift File.expand_path("lib", __dir__)
require "dome"
use Rack::Runtime
map "/health" do
  run ->(_env) { [204, {}, []] }
end
run Dome::App.new(Dome.settings)
-- lib/dome.rb --
require "dome/settings"
require "dome/app"
module Dome
  def self.settings = @settings ||= Settings.load
end
-- lib/dome/settings.rb --
module Dome
  Settings = Struct.new(:secret, :name, keyword_init: true) do
    def self.load(env = ENV)
      new(secret: env.fetch("SECRET"), name: env.fetch("NAME", "dome"))
    end
  end
end
-- lib/dome/app.rb --
module Dome
  class App
    def initialize(settings) = @settings = settings
    def call(_env) = [200, { "content-type" => "text/plain" }, [@settings.name]]
  end
end
`, ` => exits
SECRET=x => any 5407`},
	{"rackup with sinatra app that needs", `-- Procfile --
web: rackup -s puma -o 127.0.0.1 -p 5408
-- Gemfile --
gem "sinatra"
gem "puma"
-- config.ru --
require "./app"
run App
-- app.rb --
require "sinatra/base"
class App < Sinatra::Base
  configure do
    set :key, ENV.fetch("KEY") { raise KeyError, "KEY" }
    disable :logging
  end
  get("/") { settings.key }
end
`, ` => exits
KEY=x => loopback 5408`},
	{"node imports module that throws", `-- Procfile --
web: node server.js
-- package.json --
{"name":"a"}
-- server.js --
const { key } = require('./env');
require('http').createServer((q, r) => r.end(key)).listen(5409);
-- env.js --
function need(name) {
  const v = process.env[name];
  if (!v) throw new Error(` + "`" + `${name} is needed` + "`" + `);
  return v;
}
module.exports = { key: need('KEY') };
`, ` => exits
KEY=x => any 5409`},
	{"go init that needs", `-- Procfile --
web: ./app
-- go.mod --
module a

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
)

var key = mustEnv("KEY")

func mustEnv(name string) string {
	v, ok := os.LookupEnv(name)
	if !ok {
		panic("missing " + name)
	}
	return v
}

func main() { http.ListenAndServe("127.0.0.1:5410", nil) }
`, ` => exits
KEY=x => loopback 5410`},
	{"script computes host from flag", `-- Procfile --
web: bash scripts/start.sh --public
-- scripts/start.sh exec --
#!/usr/bin/env bash
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
HOST=127.0.0.1
while [[ $# -gt 0 ]]; do
  case "$1" in
    --public) HOST=0.0.0.0; shift ;;
    --port) PORT="$2"; shift 2 ;;
    *) echo "unknown $1" >&2; exit 2 ;;
  esac
done
export HOST
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 5602, process.env.HOST);
`, ` => any 5602
PORT=8602 => any 8602`},
	{"defaults file and override", `-- Procfile --
web: sh bin/run
-- etc/dome.conf --
: "${DOME_HOST:=127.0.0.1}"
: "${DOME_PORT:=5603}"
-- bin/run exec --
#!/bin/sh
. "$(dirname "$0")/../etc/dome.conf"
exec python3 -m http.server --bind "$DOME_HOST" "$DOME_PORT"
`, ` => loopback 5603
DOME_PORT=8603 => loopback 8603`},
	{"python path and module", `-- Procfile --
web: PYTHONPATH=src python3 -m dome --port ${PORT:-5608}
-- src/dome/__init__.py --
-- src/dome/__main__.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler
p = argparse.ArgumentParser()
p.add_argument("--port", type=int, required=True)
p.add_argument("--host", default="0.0.0.0")
a = p.parse_args()
HTTPServer((a.host, a.port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 5608
PORT=8608 => any 8608`},
	{"ports from a list", `-- Procfile --
web: bash start.sh
-- start.sh exec --
#!/bin/bash
ports=(5613 5614 5615)
i=${INDEX:-0}
exec python3 -m http.server "${ports[$i]}"
`, ` => any 5613
INDEX=1 => any 5614`},
	{"php closure router and env trait", `-- Procfile --
web: php app.php
-- app.php --
<?php
trait ReadsEnv {
    protected function env(string $key, string|int|null $default = null): string|int|null {
        $value = getenv(static::PREFIX . $key);
        return $value === false || $value === '' ? $default : $value;
    }
}
abstract class Server {
    use ReadsEnv;
    protected const PREFIX = '';
    abstract protected function handle($client): void;
    public function listen(): void {
        $socket = stream_socket_server(sprintf('tcp://%s:%u', $this->env('HOST', '0.0.0.0'), $this->env('PORT', 5750)));
        while ($client = @stream_socket_accept($socket, 3600)) { $this->handle($client); }
    }
}
$server = new class extends Server {
    protected const PREFIX = 'APP_';
    protected function handle($client): void { fclose($client); }
};
$server->listen();
`, ` => any 5750
APP_PORT=8751 => any 8751`},
}

func TestLoaded(t *testing.T) {
	t.Parallel()
	agree(t, loaded)
}
