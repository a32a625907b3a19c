package check_test

import "testing"

// laterSeen are servers that were written after those of seenFirst, and what each did in the
// environments beside it.
var laterSeen = []struct{ name, tree, want string }{
	{"php dotenv style with parse_ini and overrides by getopt", `-- Procfile --
web: php serve.php -p 7602
-- env.ini --
HOST=0.0.0.0
PORT=7603
-- serve.php --
<?php
$file = parse_ini_file('env.ini', false, INI_SCANNER_RAW) ?: [];
$given = getopt('p:h:');
$settings = [
    'HOST' => $given['h'] ?? getenv('HOST') ?: $file['HOST'],
    'PORT' => (int) (getenv('PORT') ?: $given['p'] ?? $file['PORT']),
];
extract($settings);
$server = @stream_socket_server(sprintf('tcp://%s:%u', $HOST, $PORT)) or exit(1);
while ($c = stream_socket_accept($server, -1)) {
    fclose($c);
}
`, ` => any 7602
PORT=6402 => any 6402`},
	{"java json settings by hand and text blocks", `-- Procfile --
web: java -cp out A
-- A.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.regex.*;
import java.util.*;

public class A {
    static final String DEFAULTS = """
        {
          "host": "0.0.0.0",
          "port": 7626
        }
        """;

    static Map<String, String> parse(String json) {
        Map<String, String> m = new HashMap<>();
        Matcher matcher = Pattern.compile("\"(\\w+)\"\\s*:\\s*\"?([^\",}\\s]+)\"?").matcher(json);
        while (matcher.find()) m.put(matcher.group(1), matcher.group(2));
        return m;
    }

    public static void main(String[] args) throws Exception {
        var settings = parse(DEFAULTS);
        System.getenv().forEach((k, v) -> settings.computeIfPresent(k.toLowerCase(), (a, b) -> v));
        HttpServer.create(new InetSocketAddress(settings.get("host"), Integer.parseInt(settings.get("port"))), 0).start();
    }
}
`, ` => any 7626
PORT=6421 => any 6421`},
	{"shell with a library and defaults", `-- Procfile --
web: ./bin/serve
-- bin/serve --
#!/usr/bin/env bash
set -o errexit -o nounset -o pipefail
here=$(dirname "$(readlink -f "$0")")
# shellcheck source=../lib/common.sh
source "$here/../lib/common.sh"
default PORT 7629
default LISTEN_HOST 127.0.0.1
log "serving on $LISTEN_HOST:$PORT"
exec python3 -m http.server --bind "$LISTEN_HOST" "$PORT"
-- lib/common.sh --
log() { printf '%s %s\n' "$(date +%T)" "$*" >&2; }
default() {
  local name=$1
  if [[ -z ${!name:-} ]]; then
    printf -v "$name" '%s' "$2"
  fi
  export "$name"
}
`, ` => loopback 7629
PORT=6424 => loopback 6424
LISTEN_HOST=0.0.0.0 => any 7629`},
	{"shell case on uname and arithmetic on time free", `-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
id=${WORKER_ID:-1}
if [ "$id" -gt 3 ]; then
  echo "too many workers" >&2
  exit 1
fi
port=$((7630 + id))
host=127.0.0.1
test "$id" -eq 1 && host=0.0.0.0
exec python3 -m http.server "$port" --bind "$host"
`, ` => any 7631
WORKER_ID=4 => exits`},
	{"shell substring and parameter expansion", `-- Procfile --
web: bash start.sh
-- start.sh --
LISTEN=${LISTEN:-127.0.0.1:7634}
HOST=${LISTEN%:*}
PORT=${LISTEN##*:}
exec node server.js --host="${HOST:-0.0.0.0}" --port="$PORT"
-- server.js --
const args = Object.fromEntries(process.argv.slice(2).map((a) => a.replace(/^--/, '').split('=')));
require('http').createServer().listen(Number(args.port), args.host);
`, ` => loopback 7634
LISTEN=0.0.0.0:6426 => any 6426
LISTEN=:6427 => any 6427`},
	{"shell waits for a port in a loop before", `-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
set -e
if [ -n "$DB_HOST" ]; then
  tries=0
  until [ "$tries" -ge 2 ]; do
    tries=$((tries + 1))
    echo "waiting for $DB_HOST ($tries)"
  done
fi
[ "${MIGRATE:-no}" = yes ] && python3 migrate.py
exec python3 -m http.server "${PORT:-7635}"
`, ` => any 7635
PORT=6428 DB_HOST=db => any 6428`},
	{"npm scripts that chain with env files", `-- Procfile --
web: npm run serve
-- package.json --
{"name":"a","scripts":{"preserve":"node -e 0","serve":"npm run env -- node server.js","env":"NODE_ENV=production HOST=0.0.0.0"}}
-- server.js --
require('http').createServer().listen(process.env.PORT || 7636, process.env.HOST || '127.0.0.1');
`, ` => any 7636
PORT=6429 => any 6429`},
	{"entry script with usage and sub commands", `-- Procfile --
web: ./docker-entrypoint.sh web
-- docker-entrypoint.sh --
#!/bin/sh
set -e

: "${HOST:=0.0.0.0}"
: "${PORT:=7701}"
export HOST PORT

run_web() {
  exec python3 -m http.server "$PORT" --bind "$HOST" "$@"
}

case "${1:-web}" in
  web)
    shift
    run_web "$@"
    ;;
  shell)
    exec sh
    ;;
  *)
    exec "$@"
    ;;
esac
`, ` => any 7701
PORT=6501 HOST=127.0.0.1 => loopback 6501`},
	{"entry script that passes on what it is given", `-- Procfile --
web: ./docker-entrypoint.sh python3 -m http.server 7702
-- docker-entrypoint.sh --
#!/bin/bash
set -eo pipefail
if [ "${1#-}" != "$1" ]; then
  set -- python3 -m http.server "$@"
fi
if [ -n "$EXTRA" ]; then
  set -- "$@" --bind 127.0.0.1
fi
exec "$@"
`, ` => any 7702
EXTRA=1 => loopback 7702`},
	{"entry script that reads a secret file", `-- Procfile --
web: ./entry.sh
-- secrets/port --
7703
-- entry.sh --
#!/bin/bash
file_env() {
  local var="$1"
  local fileVar="${var}_FILE"
  local def="${2:-}"
  if [ "${!var:-}" ] && [ "${!fileVar:-}" ]; then
    echo >&2 "error: both $var and $fileVar are set"
    exit 1
  fi
  local val="$def"
  if [ "${!var:-}" ]; then
    val="${!var}"
  elif [ "${!fileVar:-}" ]; then
    val="$(< "${!fileVar}")"
  fi
  export "$var"="$val"
  unset "$fileVar"
}
file_env PORT 7704
exec python3 -m http.server "$PORT"
`, ` => any 7704
PORT_FILE=secrets/port => any 7703`},
	{"start script that finds the host's address family", `-- Procfile --
web: bash start.sh
-- start.sh --
#!/bin/bash
declare -A binds=([false]=0.0.0.0 [true]=::)
v6=${IPV6:-false}
bind=${binds[$v6]}
exec python3 -m http.server 7705 --bind "$bind"
`, ` => any 7705
IPV6=true => any 7705`},
	{"start script with an array of options", `-- Procfile --
web: bash start.sh
-- start.sh --
#!/usr/bin/env bash
opts=()
opts+=("--bind" "0.0.0.0:${PORT:-7706}")
opts+=("--workers=${WORKERS:-1}")
if [[ "${ACCESS_LOG:-off}" == "on" ]]; then
  opts+=(--access-logfile -)
fi
exec gunicorn "${opts[@]}" web:app
-- web.py --
def app(e, s):
    s("200 OK", [])
    return [b""]
-- requirements.txt --
gunicorn
`, ` => any 7706
PORT=6506 WORKERS=2 => any 6506`},
	{"start script with tee and a subshell", `-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
(
  cd web
  exec python3 -m http.server "${PORT:-7707}" --bind 0.0.0.0
)
-- web/index.html --
x
`, ` => any 7707
PORT=6507 => any 6507`},
	{"start script that retries once on failure", `-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
python3 -m http.server "${PORT:-7708}" || python3 -m http.server 7709
`, ` => any 7708`},
	{"a profile file and exported functions", `-- Procfile --
web: bash start.sh
-- env/common --
export HOST=127.0.0.1
export PORT=7710
-- env/live --
export HOST=0.0.0.0
-- start.sh --
#!/bin/bash
SKY_ENV=${SKY_ENV:-common}
for e in common "$SKY_ENV"; do
  # shellcheck disable=SC1090
  . "env/$e"
done
exec node -p 'require("http").createServer().listen(process.env.PORT, process.env.HOST) && 1'
`, ` => loopback 7710
SKY_ENV=live => any 7710`},
	{"node script with shebang through a link name", `-- Procfile --
web: bin/gate --listen=0.0.0.0:7711
-- package.json --
{"name":"gate","bin":{"gate":"bin/gate"}}
-- bin/gate --
#!/usr/bin/env node
'use strict';
const { Gate } = require('../lib/gate');
const flags = new Map(process.argv.slice(2).filter((a) => a.startsWith('--')).map((a) => {
  const [name, ...rest] = a.slice(2).split('=');
  return [name, rest.join('=') || true];
}));
new Gate({ listen: process.env.GATE_LISTEN ?? flags.get('listen') ?? ':7712' }).open();
-- lib/gate.js --
const http = require('http');
class Gate {
  static parse(listen) {
    const at = listen.lastIndexOf(':');
    return { host: listen.substring(0, at) || undefined, port: parseInt(listen.substring(at + 1), 10) };
  }
  constructor({ listen }) {
    Object.assign(this, Gate.parse(listen));
  }
  open() {
    return http.createServer(this.handle.bind(this)).listen(this.port, this.host);
  }
  handle(req, res) { res.end('gate'); }
}
module.exports = { Gate };
`, ` => any 7711
GATE_LISTEN=127.0.0.1:6511 => loopback 6511`},
	{"express generator www", `-- Procfile --
web: node ./bin/www
-- package.json --
{"name":"w","dependencies":{"express":"^5"}}
-- app.js --
const express = require('express');
const app = express();
app.get('/', (req, res) => res.send('w'));
module.exports = app;
-- bin/www --
#!/usr/bin/env node
var app = require('../app');
var http = require('http');
var port = toPort(process.env.PORT || '7713');
app.set('port', port);
var server = http.createServer(app);
server.listen(app.get('port'));
server.on('listening', function () {
  var addr = server.address();
  console.log(typeof addr === 'string' ? 'pipe ' + addr : 'port ' + addr.port);
});
function toPort(val) {
  var n = parseInt(val, 10);
  if (isNaN(n)) return val;
  return n >= 0 ? n : false;
}
`, ` => any 7713
PORT=6513 => any 6513
PORT=-5 => exits`},
	{"node with settings by import attributes", `-- Procfile --
web: node main.mjs
-- package.json --
{"name":"a","type":"module"}
-- settings.json --
{"dev":{"port":7714,"host":"127.0.0.1"},"live":{"port":7715}}
-- main.mjs --
import settings from './settings.json' with { type: 'json' };
import { createServer } from 'node:http';
const { [process.env.STAGE ?? 'dev']: chosen = {} } = settings;
const { port = 7716, host = '0.0.0.0' } = chosen;
createServer().listen({ port, host });
`, ` => loopback 7714
STAGE=live => any 7715`},
	{"node dynamic import of a chosen module", `-- Procfile --
web: node main.mjs
-- package.json --
{"name":"a","type":"module"}
-- drivers/http.mjs --
import http from 'node:http';
export default (port) => http.createServer().listen(port, '0.0.0.0');
-- drivers/tcp.mjs --
import net from 'node:net';
export default (port) => net.createServer().listen(port + 1, '127.0.0.1');
-- main.mjs --
const driver = process.env.DRIVER ?? 'http';
const { default: open } = await import(` + "`" + `./drivers/${driver}.mjs` + "`" + `);
open(Number(process.env.PORT ?? 7717));
`, ` => any 7717
DRIVER=tcp => loopback 7718
DRIVER=none => exits`},
	{"node a chain of promises with a settings request", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
const fs = require('fs/promises');
const http = require('http');
const defaults = { port: 7719 };
fs.readFile('missing.json', 'utf8')
  .then(JSON.parse)
  .catch((err) => {
    if (err.code === 'ENOENT') return {};
    throw err;
  })
  .then((file) => ({ ...defaults, ...file, ...(process.env.PORT && { port: +process.env.PORT }) }))
  .then(({ port }) => new Promise((resolve) => {
    const server = http.createServer().listen(port, '0.0.0.0', () => resolve(server));
  }))
  .then((server) => console.log(server.address().port))
  .finally(() => console.log('done'));
`, ` => any 7719
PORT=6519 => any 6519`},
	{"node decorators by hand and symbols", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
const kPort = Symbol('port');
class Base {
  static [Symbol.hasInstance](x) { return kPort in x; }
  constructor() { this[kPort] = Number(process.env.PORT || 7720); }
  get [Symbol.toStringTag]() { return 'Base'; }
}
class Web extends Base {
  *[Symbol.iterator]() { yield this[kPort]; }
  listen() { for (const p of this) require('http').createServer().listen(p); }
}
const w = new Web();
if (w instanceof Base) w.listen();
`, ` => any 7720
PORT=6520 => any 6520`},
	{"python config with class attributes and inheritance by name", `-- Procfile --
web: python app.py
-- app.py --
import os
import config
from http.server import HTTPServer, BaseHTTPRequestHandler

cls = getattr(config, os.environ.get("APP_CONFIG", "Dev"))
settings = cls()
HTTPServer((settings.HOST, settings.port()), BaseHTTPRequestHandler).serve_forever()
-- config.py --
import os


class Base:
    HOST = "0.0.0.0"
    PORT = 7721

    def port(self):
        return int(os.environ.get("PORT", self.PORT))


class Dev(Base):
    HOST = "127.0.0.1"
    PORT = Base.PORT + 1


class Live(Base):
    pass
`, ` => loopback 7722
APP_CONFIG=Live PORT=6521 => any 6521
APP_CONFIG=Nothing => exits`},
	{"python enum flags and environment typed by annotations", `-- Procfile --
web: python app.py
-- app.py --
import os
import typing
import socketserver


class Env:
    host: str = "0.0.0.0"
    port: int = 7723
    debug: bool = False

    def __init__(self, prefix: str):
        for name, kind in typing.get_type_hints(type(self)).items():
            raw = os.environ.get(f"{prefix}_{name}".upper())
            if raw is not None:
                setattr(self, name, raw.lower() in {"1", "yes", "true"} if kind is bool else kind(raw))


env = Env("sky")
host = "127.0.0.1" if env.debug else env.host
socketserver.TCPServer((host, env.port), socketserver.BaseRequestHandler).serve_forever()
`, ` => any 7723
SKY_PORT=6523 SKY_DEBUG=yes => loopback 6523`},
	{"python entry points by a package main and logging config", `-- Procfile --
web: python -m dome.server --config dome.toml
-- dome.toml --
[server]
host = "0.0.0.0"
port = 7724

[logging]
level = "WARNING"
-- dome/__init__.py --
"""The dome."""
__version__ = "1.0"
-- dome/server.py --
from __future__ import annotations

import argparse
import logging
import os
import pathlib
import tomllib
from wsgiref.simple_server import make_server

from . import __version__

log = logging.getLogger(__name__)


def main(argv: list[str] | None = None) -> int:
    parser = argparse.ArgumentParser(description=f"dome {__version__}")
    parser.add_argument("--config", type=pathlib.Path, default=pathlib.Path("default.toml"))
    args = parser.parse_args(argv)
    config = tomllib.loads(args.config.read_text(encoding="utf-8"))
    logging.basicConfig(level=config["logging"]["level"])
    server = config["server"]
    port = int(os.environ.get("DOME_PORT", server["port"]))
    with make_server(server["host"], port, lambda e, s: [b""]) as httpd:
        log.warning("listening on %s:%s", server["host"], port)
        try:
            httpd.serve_forever()
        except KeyboardInterrupt:
            return 130
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
`, ` => any 7724
DOME_PORT=6524 => any 6524`},
	{"python fastapi with lifespan and env file of pydantic", `-- Procfile --
web: uvicorn app.main:app --host 0.0.0.0 --port ${PORT:-7725}
-- app/__init__.py --
-- app/main.py --
from contextlib import asynccontextmanager
from fastapi import FastAPI
from .settings import settings


@asynccontextmanager
async def lifespan(app):
    app.state.name = settings.name
    yield

app = FastAPI(lifespan=lifespan)


@app.get("/health")
async def health():
    return {"name": settings.name}
-- app/settings.py --
from pydantic import BaseSettings


class Settings(BaseSettings):
    name: str = "dome"
    stars: int = 3

    class Config:
        env_file = ".env"


settings = Settings()
-- requirements.txt --
fastapi
uvicorn
pydantic<2
`, ` => any 7725
PORT=6525 => any 6525`},
	{"python threads with two servers and an event", `-- Procfile --
web: python app.py
-- app.py --
import os
import threading
from http.server import ThreadingHTTPServer, BaseHTTPRequestHandler


class Quiet(BaseHTTPRequestHandler):
    def log_message(self, *a):
        pass


class Service(threading.Thread):
    def __init__(self, name, host, port):
        super().__init__(name=name)
        self.httpd = ThreadingHTTPServer((host, port), Quiet)

    def run(self):
        self.httpd.serve_forever()


services = [Service("web", "", int(os.getenv("PORT", 7726)))]
if os.getenv("METRICS_PORT"):
    services.append(Service("metrics", "127.0.0.1", int(os.environ["METRICS_PORT"])))
for s in services:
    s.start()
for s in services:
    s.join()
`, ` => any 7726
METRICS_PORT=6527 => any 7726 & loopback 6527`},
	{"go subcommands with flag sets", `-- Procfile --
web: ./srv serve -port 7728
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"flag"
	"fmt"
	"net/http"
	"os"
)

func main() {
	serve := flag.NewFlagSet("serve", flag.ExitOnError)
	port := serve.Int("port", 7729, "port")
	check := flag.NewFlagSet("check", flag.ContinueOnError)
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "serve or check")
		os.Exit(2)
	}
	switch os.Args[1] {
	case serve.Name():
		serve.Parse(os.Args[2:])
		addr := fmt.Sprintf("%s:%d", os.Getenv("HOST"), *port)
		if err := http.ListenAndServe(addr, nil); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	case check.Name():
		check.Parse(os.Args[2:])
	default:
		os.Exit(2)
	}
}
`, ` => any 7728
HOST=127.0.0.1 => loopback 7728`},
	{"go middleware chain and mux by gorilla with options", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26

require github.com/gorilla/mux v1.8.1
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"time"

	"github.com/gorilla/mux"
)

type middleware func(http.Handler) http.Handler

func chain(h http.Handler, ms ...middleware) http.Handler {
	for i := len(ms) - 1; i >= 0; i-- {
		h = ms[i](h)
	}
	return h
}

func logging(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		defer func(t time.Time) { log.Println(r.URL.Path, time.Since(t)) }(time.Now())
		next.ServeHTTP(w, r)
	})
}

func main() {
	r := mux.NewRouter()
	r.HandleFunc("/", func(w http.ResponseWriter, _ *http.Request) {}).Methods("GET", "HEAD")
	addr := ":7730"
	if port, ok := os.LookupEnv("PORT"); ok {
		addr = ":" + port
	}
	srv := http.Server{Handler: chain(r, logging), Addr: addr}
	srv.SetKeepAlivesEnabled(false)
	log.Fatalln(srv.ListenAndServe())
}
`, ` => any 7730
PORT=6530 => any 6530`},
	{"java with an inner enum of settings and varargs", `-- Procfile --
web: java -cp out A
-- A.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.function.Function;

public class A {
    enum Setting {
        HOST("0.0.0.0"), PORT("7731", Integer::parseInt);
        private final String fallback;
        private final Function<String, ?> parser;
        Setting(String fallback) { this(fallback, s -> s); }
        Setting(String fallback, Function<String, ?> parser) { this.fallback = fallback; this.parser = parser; }
        @SuppressWarnings("unchecked")
        <T> T get() {
            String raw = System.getenv("SKY_" + name());
            return (T) parser.apply(raw == null ? fallback : raw);
        }
    }
    static String join(String sep, Object... parts) {
        StringBuilder b = new StringBuilder();
        for (Object p : parts) b.append(b.length() == 0 ? "" : sep).append(p);
        return b.toString();
    }
    public static void main(String[] args) throws Exception {
        String host = Setting.HOST.get();
        int port = Setting.PORT.<Integer>get();
        System.out.println(join(":", host, port));
        HttpServer.create(new InetSocketAddress(host, port), 0).start();
    }
}
`, ` => any 7731
SKY_PORT=6531 => any 6531
SKY_PORT=low => exits`},
	{"java service loader free plugin list and optional chaining", `-- Procfile --
web: java -cp out A --profile live
-- A.java --
import java.net.*;
import java.util.*;
import java.util.stream.*;

public class A {
    record Profile(String name, String host, int port) {}
    static final List<Profile> PROFILES = List.of(new Profile("dev", "127.0.0.1", 7732), new Profile("live", "0.0.0.0", 7733));

    static Optional<String> option(String[] args, String name) {
        return IntStream.range(0, args.length - 1).filter(i -> args[i].equals("--" + name)).mapToObj(i -> args[i + 1]).findFirst();
    }

    public static void main(String[] args) throws Exception {
        Profile profile = option(args, "profile")
            .flatMap(n -> PROFILES.stream().filter(p -> p.name().equalsIgnoreCase(n)).findAny())
            .orElse(PROFILES.get(0));
        int port = Stream.of(System.getenv("PORT"), String.valueOf(profile.port())).filter(Objects::nonNull).mapToInt(Integer::parseInt).findFirst().getAsInt();
        try (var s = new ServerSocket(port, 0, InetAddress.getByName(profile.host()))) {
            for (;;) s.accept().close();
        }
    }
}
`, ` => any 7733
PORT=6533 => any 6533`},
	{"php router file with constants and a guard", `-- Procfile --
web: php -d display_errors=0 main.php
-- main.php --
<?php
namespace Main;

const DEFAULT_PORT = 7734;
define('HOST', \getenv('MAIN_HOST') ?: '0.0.0.0');

function port(): int
{
    static $port = null;
    return $port ??= (int) (\getenv('MAIN_PORT') ?: DEFAULT_PORT);
}

if (PHP_SAPI !== 'cli') {
    exit('only from the command line');
}

$server = \stream_socket_server('tcp://' . \HOST . ':' . port());
try {
    while (true) {
        $c = \stream_socket_accept($server, -1);
        \fclose($c);
    }
} finally {
    \fclose($server);
}
`, ` => any 7734
MAIN_PORT=6534 => any 6534`},
	{"ruby hash of procs and keyword defaults", `-- Procfile --
web: ruby app.rb serve
-- app.rb --
require 'socket'
DEFAULTS = { host: '0.0.0.0', port: 7735 }.freeze
def serve(host: DEFAULTS[:host], port: DEFAULTS[:port], **)
  Socket.tcp_server_loop(host, port) { |c, _| c.close }
end
COMMANDS = {
  'serve' => ->(**opts) { serve(**opts) },
  'help' => ->(**) { puts COMMANDS.keys }
}
COMMANDS.default = COMMANDS['help']
COMMANDS[ARGV.first].call(**{ port: ENV['PORT']&.to_i }.compact)
`, ` => any 7735
PORT=6535 => any 6535`},
	{"ruby refinements and comparable version", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
module Addresses
  refine String do
    def to_address(default_host: '127.0.0.1')
      host, _, port = rpartition(':')
      [host.empty? ? default_host : host, Integer(port)]
    end
  end
end
using Addresses
server = TCPServer.new(*(ENV['LISTEN'] || '0.0.0.0:7736').to_address)
server.listen(16)
loop { server.accept.close }
`, ` => any 7736
LISTEN=:6536 => loopback 6536`},
	{"a table by stage that grows", `-- Procfile --
web: bash start.sh
-- start.sh --
declare -A ports hosts=([dev]=127.0.0.1 [live]=0.0.0.0)
ports[dev]=7751
ports[live]=7752
stage=${STAGE:-dev}
if [[ -z ${hosts[$stage]:-} ]]; then
  echo "no stage $stage" >&2
  exit 2
fi
list=(a b c)
list[1]=--bind
exec python3 -m http.server "${list[1]}" "${hosts[$stage]}" "${ports[$stage]}"
`, ` => loopback 7751
STAGE=live => any 7752
STAGE=none => exits`},
	{"a server with another behind it", `-- Procfile --
web: sh start.sh
-- start.sh --
command -v python3 >/dev/null || exit 9
python3 -m http.server 7754 || exit 1
`, ` => any 7754`},
}

func TestLaterSeen(t *testing.T) {
	t.Parallel()
	for _, c := range laterSeen {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
