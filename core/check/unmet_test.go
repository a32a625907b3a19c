package check_test

import (
	"path"
	"slices"
	"strings"
	"testing"

	"ubique/core/fact"
)

// unmet are programs that were written to be tried and not to be followed: what
// each did was read from the kernel, and what the survey said of them first was
// another thing, or nothing.
var unmet = []told{
	{"unix socket or port", `-- Procfile --
web: node s.js
-- package.json --
{"name":"u"}
-- s.js --
const { createServer } = require('http');
const s = createServer((q, r) => r.end());
const where = process.env.LISTEN || process.env.PORT;
if (!where) {
  console.error('set PORT or LISTEN');
  process.exitCode = 2;
} else if (/^\d+$/.test(where)) {
  s.listen({ port: Number(where), host: '0.0.0.0' });
} else {
  s.listen(where);
}
`, `PORT=4112 => any 4112
LISTEN=./dome.sock => unix:dome.sock
 => nothing`},
	{"socket.io attached to http", `-- Procfile --
web: node s.js
-- package.json --
{"name":"io","dependencies":{"socket.io":"^4","express":"^4"}}
-- s.js --
const app = require('express')();
const server = require('http').Server(app);
const io = require('socket.io')(server, { cors: { origin: '*' } });
io.on('connection', (s) => s.emit('hello'));
server.listen(app.get('port') || process.env.PORT || 3030, function () {
  console.log('up', this.address().port);
});
`, ` => any 3030
PORT=4118 => any 4118`},
	{"go echo with caarlos0 env", `-- Procfile --
web: ./hill
-- go.mod --
module hill

go 1.25

require (
	github.com/caarlos0/env/v11 v11.3.1
	github.com/labstack/echo/v4 v4.13.4
)
-- main.go --
package main

import (
	"net/http"
	"strconv"

	"github.com/caarlos0/env/v11"
	"github.com/labstack/echo/v4"
)

type config struct {
	Port int    ` + "`" + `env:"PORT" envDefault:"1323"` + "`" + `
	Host string ` + "`" + `env:"HOST" envDefault:"127.0.0.1"` + "`" + `
}

func main() {
	cfg := env.Must(env.ParseAs[config]())
	e := echo.New()
	e.HideBanner = true
	e.GET("/", func(c echo.Context) error { return c.String(http.StatusOK, "x") })
	e.Logger.Fatal(e.Start(cfg.Host + ":" + strconv.Itoa(cfg.Port)))
}
`, ` => loopback 1323
PORT=4155 => loopback 4155
PORT=x => exits`},
	{"node text port straight in", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a"}
-- s.js --
require('http').createServer().listen(process.env.PORT, '127.0.0.1');
`, `PORT=04203 => loopback 4203
PORT=4204.0 => loopback 4204
PORT=+4205 => loopback 4205
PORT=4206x => unix:4206x`},
	{"php filter_var", `-- Procfile --
web: php s.php
-- composer.json --
{"name":"a/b"}
-- s.php --
<?php
$port = filter_var($_ENV['PORT'] ?? getenv('PORT'), FILTER_VALIDATE_INT, ['options' => ['min_range' => 1, 'max_range' => 65535, 'default' => 8459]]);
$sock = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
if ($sock === false || !socket_bind($sock, '0.0.0.0', $port) || !socket_listen($sock)) {
    exit(1);
}
while (true) { socket_accept($sock); }
`, `PORT=4227 => any 4227
PORT=70000 => any 8459
PORT=abc => any 8459
 => any 8459`},
	{"go host variants", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.25
-- main.go --
package main

import (
	"cmp"
	"log"
	"net"
	"net/http"
	"os"
)

func main() {
	l, err := net.Listen("tcp", net.JoinHostPort(os.Getenv("HOST"), cmp.Or(os.Getenv("PORT"), "8461")))
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.Serve(l, http.DefaultServeMux))
}
`, `HOST=::1 PORT=4230 => loopback 4230
HOST=[::] PORT=4231 => exits
HOST=localhost PORT=4232 => loopback 4232
HOST=0.0.0.0 => any 8461`},
	{"flask server name", `-- Procfile --
web: python3 app.py
-- requirements.txt --
flask
-- app.py --
from flask import Flask
app = Flask(__name__)
app.config['SERVER_NAME'] = 'localhost:4253'
app.config.from_prefixed_env()
if __name__ == '__main__':
    app.run()
`, ` => loopback 4253
FLASK_SERVER_NAME=127.0.0.1:4252 => loopback 4252`},
	{"django runserver default", `-- Procfile --
web: python3 manage.py runserver
-- requirements.txt --
django
-- manage.py --
import os
import sys
os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'cfg')
from django.core.management import execute_from_command_line
if len(sys.argv) > 1 and sys.argv[1] == 'runserver' and len(sys.argv) == 2 and os.environ.get('PORT'):
    sys.argv.append('0.0.0.0:' + os.environ['PORT'])
execute_from_command_line(sys.argv)
-- cfg.py --
SECRET_KEY = 'a'
DEBUG = True
ROOT_URLCONF = 'urls'
-- urls.py --
urlpatterns = []
`, ` => loopback 8000
PORT=4254 => any 4254`},
	{"aiohttp by module", `-- Procfile --
web: python3 -m aiohttp.web -H 0.0.0.0 -P ${PORT:-8080} hill.app:init
-- requirements.txt --
aiohttp
-- hill/__init__.py --
-- hill/app.py --
from aiohttp import web


def init(argv):
    return web.Application()
`, ` => any 8080
PORT=4257 => any 4257`},
	{"deno without permission to read the environment", `-- Procfile --
web: deno run --allow-net s.ts
-- deno.json --
{}
-- s.ts --
const port = Number(Deno.env.get('PORT') ?? 8466);
Deno.serve({ port }, () => new Response('x'));
`, ` => exits
PORT=4279 => exits`},
	{"dotenv precedence", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","dependencies":{"dotenv":"^16"}}
-- s.js --
const path = require('path');
const env = process.env.NODE_ENV || 'development';
require('dotenv').config({ path: [path.join(__dirname, ` + "`" + `.env.${env}` + "`" + `), path.join(__dirname, '.env')] });
require('http').createServer().listen(process.env.PORT, process.env.HOST);
-- .env --
PORT=8472
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
`, ` => loopback 8472
PORT=4288 => loopback 4288
NODE_ENV=production => any 8472`},
	{"events and plugins in a folder", `-- Procfile --
web: node app.js
-- package.json --
{"name":"e","dependencies":{"express":"^4"}}
-- app.js --
const { EventEmitter } = require('events');
const fs = require('fs');
const path = require('path');
const bus = new EventEmitter();
const app = require('express')();
for (const file of fs.readdirSync(path.join(__dirname, 'plugins')).sort()) {
  require(path.join(__dirname, 'plugins', file))(app, bus);
}
bus.on('ready', (port) => app.listen(port));
bus.emit('ready', process.env.PORT || app.locals.defaultPort);
-- plugins/a.js --
module.exports = (app) => { app.locals.defaultPort = 8106; };
-- plugins/b.js --
module.exports = (app, bus) => { app.get('/', (q, r) => r.send('x')); bus.once('ready', () => console.log('ready')); };
`, ` => any 8106
PORT=5106 => any 5106`},
	{"fastify factory with ajv env schema", `-- Procfile --
web: node index.js
-- package.json --
{"name":"f","dependencies":{"fastify":"^4","ajv":"^8"}}
-- index.js --
const Ajv = require('ajv');
const Fastify = require('fastify');
const schema = {
  type: 'object',
  required: ['PORT'],
  properties: { PORT: { type: 'integer', default: 8107, minimum: 1 }, HOST: { type: 'string', default: '0.0.0.0' } },
};
const ajv = new Ajv({ coerceTypes: true, useDefaults: true, removeAdditional: true });
const env = { ...process.env };
const validate = ajv.compile(schema);
if (!validate(env)) {
  console.error(validate.errors);
  process.exit(1);
}
const app = Fastify();
app.get('/', async () => 'x');
app.listen({ port: env.PORT, host: env.HOST });
`, ` => any 8107
PORT=5107 => any 5107
PORT=abc => exits`},
	{"go json config embedded", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.25
-- config/development.json --
{"listen": {"host": "127.0.0.1", "port": 8132}}
-- config/production.json --
{"listen": {"host": "", "port": 8133}}
-- main.go --
package main

import (
	"embed"
	"encoding/json"
	"fmt"
	"log"
	"net/http"
	"os"
)

//go:embed config/*.json
var files embed.FS

type config struct {
	Listen struct {
		Host string ` + "`" + `json:"host"` + "`" + `
		Port uint16 ` + "`" + `json:"port"` + "`" + `
	} ` + "`" + `json:"listen"` + "`" + `
}

func load(env string) (c config, err error) {
	b, err := files.ReadFile("config/" + env + ".json")
	if err != nil {
		return c, err
	}
	err = json.Unmarshal(b, &c)
	return c, err
}

func main() {
	env := "development"
	if v := os.Getenv("APP_ENV"); len(v) > 0 {
		env = v
	}
	c, err := load(env)
	if err != nil {
		log.Fatalf("config: %v", err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", c.Listen.Host, c.Listen.Port), nil))
}
`, ` => loopback 8132
APP_ENV=production => any 8133
APP_ENV=nowhere => exits`},
	{"php router with autoload and classes", `-- Procfile --
web: php bin/serve.php
-- composer.json --
{"name":"hill/dome","require":{"php":">=8.1"},"autoload":{"psr-4":{"Dome\\":"src/"}}}
-- bin/serve.php --
<?php
declare(strict_types=1);

spl_autoload_register(function (string $class): void {
    $file = __DIR__ . '/../src/' . str_replace(['Dome\\', '\\'], ['', '/'], $class) . '.php';
    if (is_file($file)) {
        require $file;
    }
});

use Dome\Config;
use Dome\Http\Server;

(new Server(Config::fromEnv($_SERVER + getenv())))->run();
-- src/Config.php --
<?php
declare(strict_types=1);

namespace Dome;

final class Config
{
    private function __construct(public readonly string $host, public readonly int $port) {}

    public static function fromEnv(array $env): self
    {
        return new self($env['HOST'] ?? '127.0.0.1', (int) ($env['PORT'] ?? 8139));
    }
}
-- src/Http/Server.php --
<?php
declare(strict_types=1);

namespace Dome\Http;

use Dome\Config;

final class Server
{
    public function __construct(private Config $config) {}

    public function run(): never
    {
        $uri = "tcp://{$this->config->host}:{$this->config->port}";
        $server = stream_socket_server($uri, $code, $message)
            ?: throw new \RuntimeException($message, $code);
        while (true) {
            $conn = @stream_socket_accept($server, 60);
            if ($conn !== false) {
                fclose($conn);
            }
        }
    }
}
`, ` => loopback 8139
PORT=5139 => loopback 5139`},
	{"class extends server", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { Server } = require('http');
class Dome extends Server {
  constructor(opts) {
    super((q, r) => r.end());
    this.opts = { port: 8407, host: '127.0.0.1', ...opts };
  }
  async start() {
    const { port, host } = this.opts;
    await new Promise((r) => super.listen(port, host, r));
    return this;
  }
}
const opts = {};
if (process.env.PORT) opts.port = process.env.PORT;
new Dome(opts).start().then((d) => console.log(d.address()));
`, ` => loopback 8407
PORT=5409 => loopback 5409`},
	{"try json env", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
let conf = { port: 8409, host: '127.0.0.1' };
try {
  conf = { ...conf, ...JSON.parse(process.env.CONF) };
} catch (e) {
  if (!(e instanceof SyntaxError)) throw e;
}
require('http').createServer().listen(conf);
`, ` => loopback 8409
CONF='{"port":5411,"host":"0.0.0.0"}' => any 5411
CONF=nope => loopback 8409`},
	{"commander subcommand", `-- Procfile --
web: node cli.js serve -p ${PORT:-8412}
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- cli.js --
const { Command, InvalidArgumentError } = require('commander');
const program = new Command();
const int = (v) => {
  const n = parseInt(v, 10);
  if (isNaN(n)) throw new InvalidArgumentError('Not a number.');
  return n;
};
program.name('dome').version('1.0.0');
program
  .command('serve')
  .option('-p, --port <number>', 'port', int, 3000)
  .option('-H, --host <host>', 'host', process.env.HOST || '0.0.0.0')
  .action((opts) => {
    require('http').createServer().listen(opts.port, opts.host);
  });
program.parse();
`, ` => any 8412
PORT=5415 => any 5415
PORT=abc => exits`},
	{"envalid", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"envalid":"^8"}}
-- a.js --
const { cleanEnv, port, host, bool } = require('envalid');
const env = cleanEnv(process.env, {
  PORT: port({ default: 8415 }),
  HOST: host({ default: '0.0.0.0', devDefault: '127.0.0.1' }),
  TLS: bool({ default: false }),
});
const mod = env.TLS ? require('https') : require('http');
mod.createServer().listen(env.PORT, env.HOST);
`, ` => any 8415
PORT=5419 => any 5419
PORT=x => exits`},
	{"walrus and chain", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
from os import getenv
from http.server import *
PORT = int(p) if (p := getenv('PORT')) and p != '0' else 8431
server = HTTPServer(('127.0.0.1' if getenv('LOCAL') else '', PORT), SimpleHTTPRequestHandler)
server.serve_forever()
`, ` => any 8431
PORT=5431 => any 5431
PORT=0 => any 8431`},
	{"namedtuple and lambda table", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
import socketserver
from collections import namedtuple
Conf = namedtuple('Conf', 'host port')
TABLE = {
    'dev': lambda: Conf('127.0.0.1', 8432),
    'prod': lambda: Conf(host='0.0.0.0', port=int(os.environ.get('PORT', '8433'))),
}
conf = TABLE[os.environ.get('APP_ENV', 'dev')]()
with socketserver.ThreadingTCPServer(conf, socketserver.StreamRequestHandler) as s:
    s.serve_forever()
`, ` => loopback 8432
APP_ENV=prod => any 8433
APP_ENV=what => exits`},
	{"metaclass registry", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
from http.server import HTTPServer, ThreadingHTTPServer, BaseHTTPRequestHandler


class Registry(type):
    known = {}

    def __new__(mcs, name, bases, ns):
        cls = super().__new__(mcs, name, bases, ns)
        if key := ns.get('key'):
            mcs.known[key] = cls
        return cls


class Backend(metaclass=Registry):
    port = int(os.environ.get('PORT', 8434))


class Plain(Backend):
    key = 'plain'

    def run(self):
        HTTPServer(('127.0.0.1', self.port), BaseHTTPRequestHandler).serve_forever()


class Threaded(Backend):
    key = 'threaded'

    def run(self):
        ThreadingHTTPServer(('0.0.0.0', self.port), BaseHTTPRequestHandler).serve_forever()


Registry.known[os.environ.get('BACKEND', 'plain')]().run()
`, ` => loopback 8434
BACKEND=threaded PORT=5433 => any 5433`},
	{"enum settings", `-- Procfile --
web: python3 a.py
-- requirements.txt --
aiohttp
-- a.py --
import enum
import os
from aiohttp import web


class Stage(str, enum.Enum):
    DEV = 'dev'
    PROD = 'prod'

    @classmethod
    def _missing_(cls, value):
        return next((m for m in cls if m.value == str(value).lower()), cls.DEV)

    @property
    def host(self):
        return {Stage.DEV: 'localhost', Stage.PROD: '0.0.0.0'}[self]


stage = Stage(os.environ.get('STAGE', 'dev'))
web.run_app(web.Application(), host=stage.host, port=int(os.environ.get('PORT', 8437)), print=None)
`, ` => loopback 8437
STAGE=PROD => any 8437
STAGE=prod PORT=5436 => any 5436`},
	{"flask with click command group", `-- Procfile --
web: python3 manage.py run
-- requirements.txt --
flask
-- manage.py --
import os
import click
from flask import Flask

app = Flask(__name__)


@click.group()
@click.option('--debug/--no-debug', default=False)
@click.pass_context
def main(ctx, debug):
    ctx.ensure_object(dict)
    ctx.obj['debug'] = debug


@main.command('run')
@click.option('-p', '--port', type=click.IntRange(1, 65535), default=lambda: os.environ.get('PORT', 8438))
@click.option('-h', '--host', default='0.0.0.0')
@click.pass_obj
def run_(obj, port, host):
    app.run(host, port, debug=obj['debug'])


if __name__ == '__main__':
    main()
`, ` => any 8438
PORT=5437 => any 5437`},
	{"asyncio gather of two", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os


async def client(r, w):
    w.close()


async def serve(host, port):
    s = await asyncio.start_server(client, host, port)
    async with s:
        await s.serve_forever()


async def main():
    jobs = [serve('0.0.0.0', int(os.environ.get('PORT', 8440)))]
    if admin := os.environ.get('ADMIN'):
        jobs.append(serve('127.0.0.1', int(admin)))
    await asyncio.gather(*jobs)

asyncio.run(main())
`, ` => any 8440
PORT=5440 ADMIN=5441 => any 5440 & loopback 5441`},
	{"tornado fork and multiple", `-- Procfile --
web: python3 a.py
-- requirements.txt --
tornado
-- a.py --
import asyncio
import os
import tornado.web


class H(tornado.web.RequestHandler):
    def get(self):
        self.write('x')


async def main():
    app = tornado.web.Application([('/', H)], debug=os.getenv('DEBUG') == '1')
    port = int(os.getenv('PORT', '8442'))
    app.listen(port, address='127.0.0.1' if app.settings['debug'] else '')
    await asyncio.Event().wait()


if __name__ == '__main__':
    asyncio.run(main())
`, ` => any 8442
PORT=5442 => any 5442`},
	{"pydantic nested with env prefix and dotenv", `-- Procfile --
web: python3 a.py
-- requirements.txt --
pydantic==1.10
uvicorn
-- .env --
APP_SERVER__HOST=0.0.0.0
-- a.py --
import uvicorn
from pydantic import BaseModel, BaseSettings


class Server(BaseModel):
    host: str = '127.0.0.1'
    port: int = 8445


class Settings(BaseSettings):
    server: Server = Server()

    class Config:
        env_prefix = 'app_'
        env_nested_delimiter = '__'
        env_file = '.env'


async def app(scope, receive, send):
    pass

s = Settings().server
uvicorn.run(app, host=s.host, port=s.port)
`, ` => any 8445
APP_SERVER__PORT=5445 => any 5445
APP_SERVER='{"port": 5446, "host": "127.0.0.1"}' => any 5446`},
	{"decouple csv and choices", `-- Procfile --
web: python3 a.py
-- requirements.txt --
python-decouple
waitress
-- settings.ini --
[settings]
BIND=127.0.0.1:8447
-- a.py --
from decouple import config
from waitress import serve
host, port = config('BIND', cast=lambda v: v.split(':'))
serve(lambda e, s: [], host=host, port=int(port))
`, ` => loopback 8447
BIND=0.0.0.0:5447 => any 5447`},
	{"text unmarshaler flag value", `-- Procfile --
web: ./a -listen ${LISTEN:-8457}
-- go.mod --
module a

go 1.25
-- main.go --
package main

import (
	"errors"
	"flag"
	"log"
	"net/http"
	"strings"
)

type address string

func (a *address) String() string { return string(*a) }

func (a *address) Set(s string) error {
	if s == "" {
		return errors.New("empty")
	}
	if !strings.Contains(s, ":") {
		s = ":" + s
	}
	*a = address(s)
	return nil
}

func main() {
	a := address(":80")
	flag.Var(&a, "listen", "where")
	flag.Parse()
	log.Fatal(http.ListenAndServe(string(a), nil))
}
`, ` => any 8457
LISTEN=localhost:5457 => loopback 5457`},
	{"supervisor script with trap", `-- Procfile --
web: sh start.sh
-- requirements.txt --
gunicorn
-- start.sh --
#!/bin/sh
cd "$(dirname "$0")" || exit 1
[ -f .env ] && . ./.env
BIND="${HOST:-0.0.0.0}:${PORT:-8491}"
exec gunicorn app:app \
  --bind "$BIND" \
  --workers 1
-- .env --
HOST=127.0.0.1
-- app.py --
app = lambda e, s: (s('200 OK', []), [b''])[1]
`, ` => loopback 8491
PORT=5491 => loopback 5491`},
	{"make target", `-- Procfile --
web: make serve
-- requirements.txt --
-- Makefile --
PORT ?= 8493
HOST := 127.0.0.1

.PHONY: serve
serve:
	python3 -m http.server $(PORT) --bind $(HOST)
`, ` => loopback 8493
PORT=5493 => loopback 5493`},
	{"promisified listen", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { promisify } = require('util');
const http = require('http');
const server = http.createServer((q, r) => r.end());
const listen = promisify(server.listen.bind(server));
(async () => {
  await listen(Number(process.env.PORT) || 9001, '127.0.0.1');
  console.log('ok');
})();
`, ` => loopback 9001
PORT=6001 => loopback 6001`},
	{"worker threads main only", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { Worker, isMainThread, workerData } = require('worker_threads');
if (isMainThread) {
  new Worker(__filename, { workerData: { port: parseInt(process.env.PORT || '9002', 10) } });
} else {
  require('http').createServer((q, r) => r.end()).listen(workerData.port, '0.0.0.0');
}
`, ` => any 9002
PORT=6002 => any 6002`},
	{"child process fork of the server", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { fork } = require('child_process');
const path = require('path');
const child = fork(path.join(__dirname, 'server.js'), ['--host', '127.0.0.1'], { env: { ...process.env, PORT: process.env.PORT || '9003' } });
child.on('exit', (code) => process.exit(code));
-- server.js --
const host = process.argv[process.argv.indexOf('--host') + 1];
require('http').createServer().listen(process.env.PORT, host);
`, ` => loopback 9003
PORT=6003 => loopback 6003`},
	{"config lib local file and NODE_CONFIG", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"config":"^3"}}
-- a.js --
const config = require('config');
require('http').createServer().listen(config.get('port'), config.has('host') ? config.get('host') : undefined);
-- config/default.yaml --
port: 9004
-- config/production.json --
{ "port": 9005 }
`, ` => any 9004
NODE_CONFIG='{"port":6004}' => any 6004
NODE_ENV=production NODE_CONFIG='{"host":"0.0.0.0"}' => any 9005`},
	{"koa behind http with keep alive", `-- Procfile --
web: node index
-- package.json --
{"name":"a","main":"index.js","dependencies":{"koa":"^2","@koa/router":"^12"}}
-- index.js --
const Koa = require('koa');
const Router = require('@koa/router');
const router = new Router();
router.get('/', (ctx) => { ctx.body = 'x'; });
const app = new Koa();
app.use(router.routes()).use(router.allowedMethods());
const { PORT = '9011', BIND = '127.0.0.1' } = { ...process.env };
const server = app.listen(...[parseInt(PORT, 10), BIND], () => {});
server.keepAliveTimeout = 65e3;
module.exports = server;
`, ` => loopback 9011
PORT=6010 => loopback 6010`},
	{"dotenv config import and expand", `-- Procfile --
web: node -r dotenv/config a.js
-- package.json --
{"name":"a","dependencies":{"dotenv":"^16","dotenv-expand":"^11"}}
-- .env --
BASE=901
PORT=${BASE}2
-- a.js --
const dotenv = require('dotenv');
const { expand } = require('dotenv-expand');
expand(dotenv.config());
require('http').createServer().listen(Number(process.env.PORT));
`, ` => any 9012
PORT=6011 => any 6011`},
	{"tls when cert given else http", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { readFileSync } = require('fs');
function makeServer(handler) {
  try {
    return require('https').createServer({ key: readFileSync(process.env.TLS_KEY ?? 'key.pem'), cert: readFileSync('cert.pem') }, handler);
  } catch (err) {
    if (err.code !== 'ENOENT') throw err;
    return require('http').createServer(handler);
  }
}
const server = makeServer((q, r) => r.end());
server.listen({ host: '0.0.0.0', port: process.env.PORT || 9014, exclusive: true });
`, ` => any 9014
PORT=6013 => any 6013`},
	{"socket create_server dual", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
import socket

addr = ("", int(os.environ.get("PORT", "9023")))
if socket.has_dualstack_ipv6():
    s = socket.create_server(addr, family=socket.AF_INET6, dualstack_ipv6=True)
else:
    s = socket.create_server(addr)
while True:
    c, _ = s.accept()
    c.close()
`, ` => any 9023
PORT=6023 => any 6023`},
	{"multiprocessing process", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler
from multiprocessing import Process


def serve(host, port):
    HTTPServer((host, port), SimpleHTTPRequestHandler).serve_forever()


if __name__ == "__main__":
    p = Process(target=serve, args=("0.0.0.0",), kwargs={"port": int(os.environ.get("PORT", "9024"))})
    p.start()
    p.join()
`, ` => any 9024
PORT=6024 => any 6024`},
	{"tcp addr", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.25
-- main.go --
package main

import (
	"log"
	"net"
	"os"
	"strconv"
)

func main() {
	ip := net.ParseIP(os.Getenv("HOST"))
	if ip == nil {
		ip = net.IPv4(127, 0, 0, 1)
	}
	port, err := strconv.ParseUint(getenv("PORT", "9041"), 10, 16)
	if err != nil {
		log.Fatalln("PORT:", err)
	}
	l, err := net.ListenTCP("tcp", &net.TCPAddr{IP: ip, Port: int(port)})
	if err != nil {
		log.Fatalln(err)
	}
	defer l.Close()
	for {
		c, err := l.AcceptTCP()
		if err != nil {
			return
		}
		c.Close()
	}
}

func getenv(k, d string) string {
	if v := os.Getenv(k); v != "" {
		return v
	}
	return d
}
`, ` => loopback 9041
PORT=6041 HOST=0.0.0.0 => any 6041
PORT=x => exits`},
	{"erb yaml", `-- Procfile --
web: ruby a.rb
-- Gemfile --
source 'https://rubygems.org'
-- config.yml --
server:
  host: <%= ENV['PORT'] ? '0.0.0.0' : '127.0.0.1' %>
  port: <%= ENV.fetch('PORT', 9051) %>
-- a.rb --
require 'erb'
require 'socket'
require 'yaml'
conf = YAML.safe_load(ERB.new(File.read(File.join(__dir__, 'config.yml'))).result, symbolize_names: true)
host, port = conf[:server].values_at(:host, :port)
TCPServer.open(host, port) { |s| loop { s.accept.close } }
`, ` => loopback 9051
PORT=6051 => any 6051`},
	{"rack server start", `-- Procfile --
web: ruby a.rb
-- Gemfile --
source 'https://rubygems.org'
gem 'rack', '~> 2.2'
gem 'webrick'
-- a.rb --
require 'rack'
Rack::Server.start(app: ->(_e) { [200, {}, ['x']] }, Port: ENV['PORT'] || 9054, server: 'webrick')
`, ` => loopback 9054
PORT=6054 => loopback 6054
RACK_ENV=production => any 9054`},
	{"abstract class and inner threads", `-- Procfile --
web: java -cp out app.Main
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>d</groupId><artifactId>d</artifactId><version>1</version></project>
-- src/app/Main.java --
package app;

import java.util.ArrayList;
import java.util.List;

public class Main {
    public static void main(String[] args) {
        List<Service> services = new ArrayList<>();
        services.add(new Web(env("PORT", 9073)));
        if (System.getenv("ADMIN_PORT") != null) {
            services.add(new Admin());
        }
        services.stream().map(Thread::new).forEach(Thread::start);
    }

    static int env(String name, int fallback) {
        var v = System.getenv(name);
        return v == null ? fallback : Integer.parseInt(v.strip());
    }
}
-- src/app/Service.java --
package app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;

abstract class Service implements Runnable {
    protected abstract InetSocketAddress address();

    @Override
    public void run() {
        try (ServerSocket s = new ServerSocket()) {
            s.bind(address());
            while (true) {
                s.accept().close();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
-- src/app/Web.java --
package app;

import java.net.InetSocketAddress;

final class Web extends Service {
    private final int port;

    Web(int port) { this.port = port; }

    @Override
    protected InetSocketAddress address() { return new InetSocketAddress("0.0.0.0", port); }
}
-- src/app/Admin.java --
package app;

import java.net.InetSocketAddress;

final class Admin extends Service {
    @Override
    protected InetSocketAddress address() { return new InetSocketAddress("127.0.0.1", Main.env("ADMIN_PORT", 0)); }
}
`, ` => any 9073
PORT=6073 ADMIN_PORT=6074 => any 6073 & loopback 6074`},
	{"fastify env plugin like hooks", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"fastify":"^4"}}
-- app.mjs --
import Fastify from 'fastify';
const app = Fastify({ logger: process.env.LOG === '1' ? { level: 'error' } : false });
app.decorate('conf', { port: process.env.PORT ?? 3005 });
app.get('/', async (req) => ({ port: req.server.conf.port }));
const close = async () => { await app.close(); process.exit(0); };
process.once('SIGTERM', close).once('SIGINT', close);
await app.listen({ port: Number(app.conf.port), host: '0.0.0.0' });
`, ` => any 3005
PORT=7005 LOG=1 => any 7005`},
	{"zod env with preprocess", `-- Procfile --
web: node app.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"zod":"^3"}}
-- app.mjs --
import http from 'node:http';
import { z } from 'zod';
const schema = z.object({
  PORT: z.preprocess((v) => (v === '' ? undefined : v), z.coerce.number().int().positive().default(3007)),
  PUBLIC: z.enum(['true', 'false']).default('true').transform((v) => v === 'true'),
});
const env = schema.parse(process.env);
http.createServer().listen(env.PORT, env.PUBLIC ? '0.0.0.0' : '127.0.0.1');
`, ` => any 3007
PORT=7007 => any 7007
PORT= => any 3007`},
	{"tornado options from file and env", `-- Procfile --
web: python3 app.py --debug=true
-- requirements.txt --
tornado
-- app.py --
import os
import tornado.ioloop
import tornado.web
from tornado.options import define, options, parse_command_line

define("debug", default=False, type=bool)
define("port", default=int(os.environ.get("PORT", 8027)), type=int)


class Main(tornado.web.RequestHandler):
    def get(self):
        self.write("x")


if __name__ == "__main__":
    parse_command_line()
    tornado.web.Application([(r"/", Main)], autoreload=False).listen(options.port, "127.0.0.1" if options.debug else "0.0.0.0")
    tornado.ioloop.IOLoop.current().start()
`, ` => loopback 8027
PORT=7027 => loopback 7027`},
	{"cobra persistent flags and env in prerun", `-- Procfile --
web: ./a serve --host 127.0.0.1
-- go.mod --
module a

go 1.25

require github.com/spf13/cobra v1.10.2
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"
	"strconv"

	"github.com/spf13/cobra"
)

type options struct {
	host string
	port int
}

func newRoot() *cobra.Command {
	o := &options{}
	root := &cobra.Command{
		Use: "a",
		PersistentPreRunE: func(cmd *cobra.Command, args []string) error {
			if v := os.Getenv("PORT"); v != "" && !cmd.Flags().Changed("port") {
				n, err := strconv.Atoi(v)
				if err != nil {
					return err
				}
				o.port = n
			}
			return nil
		},
	}
	root.PersistentFlags().IntVar(&o.port, "port", 8043, "port")
	root.AddCommand(newServe(o))
	return root
}

func newServe(o *options) *cobra.Command {
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "serves",
		RunE: func(*cobra.Command, []string) error {
			return http.ListenAndServe(fmt.Sprintf("%s:%d", o.host, o.port), nil)
		},
	}
	cmd.Flags().StringVar(&o.host, "host", "", "host")
	return cmd
}

func main() {
	if err := newRoot().Execute(); err != nil {
		os.Exit(1)
	}
}
`, ` => loopback 8043
PORT=7043 => loopback 7043`},
	{"nest with validated env", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a","dependencies":{"@nestjs/core":"^10","@nestjs/common":"^10","@nestjs/config":"^3","@nestjs/platform-express":"^10","joi":"^17"}}
-- main.js --
require('reflect-metadata');
const { NestFactory } = require('@nestjs/core');
const { Module } = require('@nestjs/common');
const { ConfigModule, ConfigService } = require('@nestjs/config');
const Joi = require('joi');
class AppModule {}
Module({ imports: [ConfigModule.forRoot({ isGlobal: true, validationSchema: Joi.object({ PORT: Joi.number().port().default(7180) }) })] })(AppModule);
(async () => {
  const app = await NestFactory.create(AppModule, { logger: false, abortOnError: false });
  const config = app.get(ConfigService);
  await app.listen(config.get('PORT'), '0.0.0.0');
})().catch(() => process.exit(1));
`, ` => any 7180
PORT=7109 => any 7109
PORT=abc => exits`},
	{"bun serve text port and routes", `-- Procfile --
web: bun run s.ts
-- package.json --
{"name":"a"}
-- s.ts --
import { serve } from "bun";
const server = serve({
  port: Bun.env.PORT ?? "7181",
  hostname: "127.0.0.1",
  fetch(req, server) { return new Response(String(server.port)); },
  error() { return new Response("e", { status: 500 }); },
});
`, ` => loopback 7181
PORT=7110 => loopback 7110`},
	{"tornado sockets bound by hand", `-- Procfile --
web: python3 app.py
-- requirements.txt --
tornado
-- app.py --
import asyncio
import os
import tornado.httpserver
import tornado.netutil
import tornado.web


async def main():
    sockets = tornado.netutil.bind_sockets(int(os.environ.get("PORT", "7525")), "127.0.0.1")
    server = tornado.httpserver.HTTPServer(tornado.web.Application([]))
    server.add_sockets(sockets)
    await asyncio.Event().wait()


asyncio.run(main())
`, ` => loopback 7525
PORT=7425 => loopback 7425`},
	{"waitress create_server", `-- Procfile --
web: python3 app.py
-- requirements.txt --
waitress
-- app.py --
import os
from waitress.server import create_server


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]


server = create_server(app, host="0.0.0.0", port=int(os.getenv("PORT", 7526)))
server.run()
`, ` => any 7526
PORT=7426 => any 7426`},
	{"dotenv by two calls, the special first", `-- Procfile --
web: NODE_ENV=production node src/s.js
-- package.json --
{"name":"a","dependencies":{"dotenv":"^16"}}
-- src/s.js --
const path = require('path');
const dotenv = require('dotenv');
dotenv.config({ path: path.resolve(__dirname, ` + "`" + `../.env.${process.env.NODE_ENV}` + "`" + `), quiet: true });
dotenv.config();
require('http').createServer().listen(process.env.PORT, process.env.HOST);
-- .env --
PORT=8472
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
PORT=8473
`, ` => any 8473
PORT=4601 => any 4601`},
	{"dotenv named by a condition", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","dependencies":{"dotenv":"^16"}}
-- s.js --
require('dotenv').config({ path: process.env.NODE_ENV === 'production' ? '.env.production' : '.env.local' });
require('http').createServer().listen(process.env.PORT, process.env.HOST);
-- .env.local --
PORT=8472
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
PORT=8473
`, ` => loopback 8472
NODE_ENV=production => any 8473`},
	{"ruby dotenv by environment", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source 'https://rubygems.org'
gem 'dotenv'
-- s.rb --
require 'dotenv'
require 'socket'
Dotenv.load(".env.#{ENV.fetch('RACK_ENV', 'development')}", '.env')
s = TCPServer.new(ENV.fetch('HOST'), ENV.fetch('PORT').to_i)
loop { s.accept.close }
-- .env --
PORT=8474
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
`, ` => loopback 8474
RACK_ENV=production => any 8474`},
	{"godotenv by environment", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.25

require github.com/joho/godotenv v1.5.1
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"

	"github.com/joho/godotenv"
)

func main() {
	env := os.Getenv("APP_ENV")
	if env == "" {
		env = "development"
	}
	godotenv.Load(".env." + env)
	godotenv.Load()
	log.Fatal(http.ListenAndServe(os.Getenv("HOST")+":"+os.Getenv("PORT"), nil))
}
-- .env --
PORT=8475
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
`, ` => loopback 8475
APP_ENV=production => any 8475
PORT=4602 => loopback 4602`},
	{"bun environment files", `-- Procfile --
web: bun s.ts
-- package.json --
{"name":"a"}
-- s.ts --
Bun.serve({ hostname: process.env.HOST, fetch: () => new Response('x') });
-- .env --
PORT=8476
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
-- .env.local --
PORT=8477
`, ` => loopback 8477
NODE_ENV=production => any 8477
PORT=4603 HOST=::1 => loopback 4603`},
	{"python dotenv by environment", `-- Procfile --
web: python3 app/s.py
-- requirements.txt --
python-dotenv
-- app/s.py --
import os
from pathlib import Path
from http.server import HTTPServer, BaseHTTPRequestHandler
from dotenv import load_dotenv

BASE = Path(__file__).resolve().parent.parent
load_dotenv(BASE / f".env.{os.getenv('APP_ENV', 'dev')}")
load_dotenv(BASE / ".env", override=True)
HTTPServer((os.environ["HOST"], int(os.environ["PORT"])), BaseHTTPRequestHandler).serve_forever()
-- .env --
PORT=8478
-- .env.dev --
HOST=127.0.0.1
PORT=1
-- .env.prod --
HOST=0.0.0.0
`, ` => loopback 8478
APP_ENV=prod => any 8478`},
	{"dotenv-flow like by hand", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"dotenv":"^16"}}
-- s.mjs --
import dotenv from 'dotenv';
import http from 'node:http';
const mode = process.env.NODE_ENV || 'development';
for (const file of [` + "`" + `.env.${mode}.local` + "`" + `, ` + "`" + `.env.${mode}` + "`" + `, '.env']) dotenv.config({ path: file });
http.createServer().listen(process.env.PORT, process.env.HOST);
-- .env --
PORT=8479
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
`, ` => loopback 8479
NODE_ENV=production => any 8479`},
	{"deno with env list", `-- Procfile --
web: deno run --allow-net --allow-env=PORT,HOST s.ts
-- deno.json --
{}
-- s.ts --
const port = Number(Deno.env.get('PORT') ?? 8466);
Deno.serve({ port, hostname: Deno.env.get('HOST') ?? '0.0.0.0' }, () => new Response('x'));
`, ` => any 8466
PORT=4701 HOST=127.0.0.1 => loopback 4701`},
	{"deno with too few of env", `-- Procfile --
web: deno run --allow-net --allow-env=PORT s.ts
-- deno.json --
{}
-- s.ts --
const port = Number(Deno.env.get('PORT') ?? 8466);
Deno.serve({ port, hostname: Deno.env.get('HOST') ?? '0.0.0.0' }, () => new Response('x'));
`, ` => exits
PORT=4701 HOST=127.0.0.1 => exits`},
	{"deno that catches", `-- Procfile --
web: deno run -N s.ts
-- deno.json --
{}
-- s.ts --
function env(name: string, fallback: string): string {
  try {
    return Deno.env.get(name) ?? fallback;
  } catch {
    return fallback;
  }
}
Deno.serve({ port: Number(env('PORT', '8467')) }, () => new Response('x'));
`, ` => any 8467
PORT=4702 => any 8467`},
	{"deno with a port list", `-- Procfile --
web: deno run --allow-net=0.0.0.0:8000 --allow-env s.ts
-- deno.json --
{}
-- s.ts --
const port = Number(Deno.env.get('PORT') ?? 8000);
Deno.serve({ port }, () => new Response('x'));
`, ` => any 8000
PORT=4703 => exits
PORT=8000 => any 8000`},
	{"deno reads a file without the right", `-- Procfile --
web: deno run --allow-net s.ts
-- deno.json --
{}
-- conf.json --
{"port": 8100}
-- s.ts --
const conf = JSON.parse(await Deno.readTextFile('./conf.json'));
Deno.serve({ port: conf.port }, () => new Response('x'));
`, ` => exits`},
	{"deno imports data", `-- Procfile --
web: deno run --allow-net s.ts
-- deno.json --
{}
-- conf.json --
{"port": 8100}
-- s.ts --
import conf from './conf.json' with { type: 'json' };
Deno.serve({ port: conf.port }, () => new Response('x'));
`, ` => any 8100`},
	{"manage with a default port", `-- Procfile --
web: python3 manage.py runserver
-- requirements.txt --
django
-- manage.py --
import os
import sys

if __name__ == '__main__':
    os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'cfg')
    from django.core.management import execute_from_command_line
    from django.core.management.commands.runserver import Command as runserver
    runserver.default_port = os.environ.get('PORT', '8070')
    runserver.default_addr = '0.0.0.0'
    execute_from_command_line(sys.argv)
-- cfg.py --
SECRET_KEY = 'a'
DEBUG = True
ROOT_URLCONF = 'urls'
-- urls.py --
urlpatterns = []
`, ` => any 8070
PORT=4801 => any 4801`},
	{"run.py with a list", `-- Procfile --
web: python3 run.py
-- requirements.txt --
django
-- run.py --
import os

os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'cfg')

from django.core.management import execute_from_command_line

if __name__ == '__main__':
    execute_from_command_line(['run.py', 'runserver', '--noreload', f"0.0.0.0:{os.environ.get('PORT', 8071)}"])
-- cfg.py --
SECRET_KEY = 'a'
DEBUG = True
ROOT_URLCONF = 'urls'
-- urls.py --
urlpatterns = []
`, ` => any 8071
PORT=4802 => any 4802`},
	{"run.py with call_command", `-- Procfile --
web: python3 run.py
-- requirements.txt --
django
-- run.py --
import os
import django
from django.core.management import call_command

os.environ['DJANGO_SETTINGS_MODULE'] = 'cfg'
django.setup()
port = int(os.environ.get('PORT', 8072))
call_command('check')
call_command('runserver', '127.0.0.1:%d' % port, use_reloader=False)
-- cfg.py --
SECRET_KEY = 'a'
DEBUG = True
ROOT_URLCONF = 'urls'
-- urls.py --
urlpatterns = []
`, ` => loopback 8072
PORT=4803 => loopback 4803`},
	{"argv that is changed", `-- Procfile --
web: node s.js --port=4900 extra
-- package.json --
{"name":"a"}
-- s.js --
if (process.env.PORT) process.argv.push('--port=' + process.env.PORT);
process.argv.splice(2, process.env.PORT ? 1 : 0);
const args = process.argv.slice(2);
const port = args.filter((a) => a.startsWith('--port=')).map((a) => Number(a.slice(7))).pop();
require('http').createServer().listen(port);
`, ` => any 4900
PORT=4901 => any 4901`},
	{"argv popped in python", `-- Procfile --
web: python3 s.py serve --port 4902
-- requirements.txt --
-- s.py --
import argparse
import os
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler

verb = sys.argv.pop(1)
if "PORT" in os.environ:
    sys.argv += ["--port", os.environ["PORT"]]
p = argparse.ArgumentParser()
p.add_argument("--port", type=int)
args = p.parse_args()
HTTPServer(("127.0.0.1" if verb == "serve" else "", args.port), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 4902
PORT=4903 => loopback 4903`},
	{"argv set anew", `-- Procfile --
web: python3 s.py
-- requirements.txt --
-- s.py --
import os
import sys
import runpy
sys.argv = [sys.argv[0], os.environ.get("PORT", "8001")]
import server
server.main()
-- server.py --
import sys
from http.server import HTTPServer, BaseHTTPRequestHandler


def main():
    HTTPServer(("", int(sys.argv[1])), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8001
PORT=4904 => any 4904`},
	{"ruby ARGV", `-- Procfile --
web: ruby s.rb serve 4905
-- Gemfile --
source 'https://rubygems.org'
-- s.rb --
require 'socket'
verb = ARGV.shift
abort "no verb" unless verb == 'serve'
port = ARGV.first || 4906
s = TCPServer.new('0.0.0.0', port.to_i)
loop { s.accept.close }
`, ` => any 4905`},
	{"php argv", `-- Procfile --
web: php s.php --port=4907
-- composer.json --
{"name":"a/b"}
-- s.php --
<?php
array_shift($argv);
$port = 8000;
foreach ($argv as $a) {
    if (preg_match('/^--port=(\d+)$/', $a, $m)) { $port = (int) $m[1]; }
}
$s = stream_socket_server("tcp://0.0.0.0:$port");
while (true) { @stream_socket_accept($s, 1000); }
`, ` => any 4907`},
	{"go os.Args changed", `-- Procfile --
web: ./a serve -port 4908
-- go.mod --
module a

go 1.25
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
		fmt.Println("usage")
		os.Exit(2)
	}
	verb := os.Args[1]
	os.Args = append(os.Args[:1], os.Args[2:]...)
	port := flag.Int("port", 8000, "")
	flag.Parse()
	switch verb {
	case "serve":
		http.ListenAndServe(fmt.Sprintf("127.0.0.1:%d", *port), nil)
	default:
		os.Exit(2)
	}
}
`, ` => loopback 4908`},
	{"cherrypy quickstart with update", `-- Procfile --
web: python3 s.py
-- requirements.txt --
cherrypy
-- s.py --
import os
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


if __name__ == "__main__":
    cherrypy.config.update({
        "server.socket_host": "0.0.0.0",
        "server.socket_port": int(os.environ.get("PORT", "8090")),
    })
    cherrypy.quickstart(Root())
`, ` => any 8090
PORT=4951 => any 4951`},
	{"cherrypy by default", `-- Procfile --
web: python3 s.py
-- requirements.txt --
cherrypy
-- s.py --
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


cherrypy.quickstart(Root(), "/", {"global": {"server.thread_pool": 4}})
`, ` => loopback 8080`},
	{"cherrypy with config in quickstart", `-- Procfile --
web: python3 s.py
-- requirements.txt --
cherrypy
-- s.py --
import os
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


conf = {"global": {"server.socket_host": "127.0.0.1", "server.socket_port": int(os.getenv("PORT", 8091)), "engine.autoreload.on": False}}
cherrypy.quickstart(Root(), "/", config=conf)
`, ` => loopback 8091
PORT=4952 => loopback 4952`},
	{"cherrypy server attributes and engine", `-- Procfile --
web: python3 s.py
-- requirements.txt --
cherrypy
-- s.py --
import os
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


cherrypy.tree.mount(Root())
cherrypy.server.socket_host = "0.0.0.0"
if "PORT" in os.environ:
    cherrypy.server.socket_port = int(os.environ["PORT"])
cherrypy.engine.start()
cherrypy.engine.block()
`, ` => any 8080
PORT=4953 => any 4953`},
	{"cherrypy file", `-- Procfile --
web: python3 s.py
-- requirements.txt --
cherrypy
-- server.conf --
[global]
server.socket_host: "0.0.0.0"
server.socket_port: 8092
-- s.py --
import cherrypy


class Root:
    @cherrypy.expose
    def index(self):
        return "x"


cherrypy.config.update("server.conf")
cherrypy.quickstart(Root())
`, ` => any 8092`},
	{"env-schema", `-- Procfile --
web: node index.js
-- package.json --
{"name":"f","dependencies":{"env-schema":"^5"}}
-- index.js --
const envSchema = require('env-schema');
const config = envSchema({ schema: { type: 'object', required: ['PORT'], properties: { PORT: { type: 'number', default: 8201 }, HOST: { type: 'string', default: '127.0.0.1' } } }, dotenv: true });
require('http').createServer().listen(config.PORT, config.HOST);
-- .env --
HOST=0.0.0.0
`, ` => any 8201
PORT=5201 => any 5201
PORT=abc => exits`},
	{"fastify env", `-- Procfile --
web: node index.js
-- package.json --
{"name":"f","dependencies":{"@fastify/env":"^4","fastify":"^4"}}
-- index.js --
const fastify = require('fastify')();
const options = { confKey: 'cfg', schema: { type: 'object', properties: { PORT: { type: 'integer', default: 8202 } } }, data: process.env };
fastify.register(require('@fastify/env'), options);
const start = async () => {
  await fastify.ready();
  await fastify.listen({ port: fastify.cfg.PORT, host: '0.0.0.0' });
};
start();
`, ` => any 8202
PORT=5202 => any 5202`},
	{"ajv on process.env", `-- Procfile --
web: node index.js
-- package.json --
{"name":"f","dependencies":{"ajv":"^8"}}
-- index.mjs --
-- index.js --
const { default: Ajv } = require('ajv');
const validate = new Ajv({ useDefaults: true, coerceTypes: true }).compile({ type: 'object', properties: { PORT: { type: 'integer', default: 8203 } } });
if (!validate(process.env)) throw new Error('env');
require('http').createServer().listen(Number(process.env.PORT), '127.0.0.1');
`, ` => loopback 8203
PORT=5203 => loopback 5203
PORT=5203.5 => exits`},
	{"gather inline", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os


async def handle(r, w):
    w.close()


async def serve(port, host=None):
    server = await asyncio.start_server(handle, host, port)
    async with server:
        await server.serve_forever()


async def main():
    await asyncio.gather(serve(int(os.environ.get("PORT", 8501))), serve(8502, "127.0.0.1"))

asyncio.run(main())
`, ` => any 8501 & loopback 8502
PORT=5501 => any 5501 & loopback 8502`},
	{"task group", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os


async def handle(r, w):
    w.close()


async def serve(port, host=None):
    server = await asyncio.start_server(handle, host, port)
    await server.serve_forever()


async def main():
    async with asyncio.TaskGroup() as tg:
        tg.create_task(serve(int(os.environ.get("PORT", 8503))))
        if "PORT" not in os.environ:
            tg.create_task(serve(8504, "127.0.0.1"))

if __name__ == "__main__":
    asyncio.run(main())
`, ` => any 8503 & loopback 8504
PORT=5502 => any 5502`},
	{"never awaited", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os


async def handle(r, w):
    w.close()


async def serve(port, host=None):
    return await asyncio.start_server(handle, host, port)


async def main():
    if "PORT" not in os.environ:
        serve(8505)
    else:
        s = await serve(int(os.environ["PORT"]))
        await s.serve_forever()

asyncio.run(main())
`, ` => nothing
PORT=5503 => any 5503`},
	{"create server with protocol class", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os


class Echo(asyncio.Protocol):
    def connection_made(self, transport):
        self.transport = transport

    def data_received(self, data):
        self.transport.write(data)


class Server:
    def __init__(self):
        self._server = None
        self.port = int(os.environ.get("PORT", "8508"))

    async def __aenter__(self):
        loop = asyncio.get_running_loop()
        self._server = await loop.create_server(Echo, "127.0.0.1", self.port)
        return self

    async def __aexit__(self, *exc):
        self._server.close()

    async def wait(self):
        await self._server.serve_forever()


async def main():
    async with Server() as s:
        await s.wait()

asyncio.run(main())
`, ` => loopback 8508
PORT=5505 => loopback 5505`},
	{"background task and uvicorn server", `-- Procfile --
web: python3 a.py
-- requirements.txt --
uvicorn
-- a.py --
import asyncio
import os
import uvicorn


async def app(scope, receive, send):
    pass


async def tick():
    while True:
        await asyncio.sleep(1)


async def main():
    task = asyncio.create_task(tick())
    server = uvicorn.Server(uvicorn.Config(app, host="127.0.0.1", port=int(os.getenv("PORT", "8509")), lifespan="off"))
    await server.serve()
    task.cancel()

asyncio.run(main())
`, ` => loopback 8509
PORT=5506 => loopback 5506`},
	{"options with parseInt and env", `-- Procfile --
web: node a.js -p 5601 --no-public
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- a.js --
const { program, Option } = require('commander');
program
  .option('-p, --port <n>', 'port', parseInt)
  .addOption(new Option('--host <h>', 'host').env('HILL_HOST').default('127.0.0.1'))
  .option('--no-public', 'private')
  .parse(process.argv);
const o = program.opts();
require('http').createServer().listen(o.public ? 1 : o.port, o.host);
`, ` => loopback 5601
HILL_HOST=0.0.0.0 => any 5601`},
	{"parseInt with a default", `-- Procfile --
web: node a.js -p 5602
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- a.mjs --
import { Command } from 'commander';
-- a.js --
const { Command } = require('commander');
const cmd = new Command('dome');
cmd.option('-p, --port <n>', 'port', parseInt, 3000);
cmd.parse();
require('http').createServer().listen(cmd.opts().port);
`, ` => exits`},
	{"globals and sub", `-- Procfile --
web: node a.js --verbose serve 5603 --bind=127.0.0.1
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- a.js --
const { Command } = require('commander');
const root = new Command().option('-v, --verbose');
const serve = new Command('serve')
  .argument('[port]', 'port', (v) => Number(v), 8000)
  .option('-b, --bind <host>', 'host', '0.0.0.0')
  .action(async (port, options, command) => {
    if (!command.optsWithGlobals().verbose) process.exit(1);
    require('http').createServer().listen(Number(port), options.bind);
  });
root.addCommand(serve);
root.parseAsync();
`, ` => loopback 5603`},
	{"unknown option", `-- Procfile --
web: node a.js --prot 5604
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- a.js --
const { program } = require('commander');
program.option('--port <n>').parse();
require('http').createServer().listen(program.opts().port || 8000);
`, ` => exits`},
	{"unknown command", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"commander":"^12"}}
-- a.js --
const { program } = require('commander');
program.command('serve').action(() => require('http').createServer().listen(8000));
program.parse();
`, ` => exits`},
	{"thread class of its own", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
import threading
from http.server import HTTPServer, BaseHTTPRequestHandler


class Web(threading.Thread):
    def __init__(self, host, port):
        super().__init__(name="web")
        self.server = HTTPServer((host, port), BaseHTTPRequestHandler)

    def run(self):
        self.server.serve_forever()


webs = [Web("127.0.0.1", int(os.environ.get("PORT", 9101)))]
if "PORT" not in os.environ:
    webs.append(Web("", 9102))
for w in webs:
    w.start()
for w in webs:
    w.join()
`, ` => any 9102 & loopback 9101
PORT=6101 => loopback 6101`},
	{"executor", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
from concurrent.futures import ThreadPoolExecutor
from http.server import ThreadingHTTPServer, BaseHTTPRequestHandler


def serve(port, host="0.0.0.0"):
    ThreadingHTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()


with ThreadPoolExecutor(2) as pool:
    pool.submit(serve, int(os.environ.get("PORT", 9103)))
    pool.submit(serve, 9104, host="127.0.0.1")
`, ` => any 9103 & loopback 9104
PORT=6102 => any 6102 & loopback 9104`},
	{"daemon thread and the loop of the main one", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import os
import time
from threading import Thread, Event
from wsgiref.simple_server import make_server


def serve(port):
    make_server("127.0.0.1", port, lambda e, s: []).serve_forever()


Thread(target=serve, args=(int(os.environ.get("PORT", 9105)),), daemon=True).start()
stop = Event()
while not stop.wait(60):
    pass
`, ` => loopback 9105
PORT=6103 => loopback 6103`},
	{"spawn with inherited env", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const { spawn } = require('node:child_process');
const child = spawn(process.execPath, ['server.js', '--port', process.env.PORT || '9201'], { stdio: 'inherit' });
child.on('close', (code) => process.exit(code ?? 0));
-- server.js --
const i = process.argv.indexOf('--port');
require('http').createServer().listen(Number(process.argv[i + 1]), '127.0.0.1');
`, ` => loopback 9201
PORT=6201 => loopback 6201`},
	{"cluster by worker threads with url", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a"}
-- a.mjs --
import { Worker } from 'node:worker_threads';
const base = Number(process.env.PORT ?? 9202);
for (let i = 0; i < Number(process.env.N ?? 2); i++) {
  new Worker(new URL('./w.mjs', import.meta.url), { workerData: { port: base + i }, env: { HOST: '127.0.0.1' } });
}
-- w.mjs --
import { workerData } from 'node:worker_threads';
import { createServer } from 'node:http';
createServer().listen(workerData.port, process.env.HOST);
`, ` => loopback 9202 & loopback 9203
PORT=6202 N=1 => loopback 6202`},
	{"fork by cluster setup", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const cluster = require('cluster');
if (cluster.isMaster) {
  cluster.fork({ HOST: '127.0.0.1' });
} else {
  require('http').createServer().listen(process.env.PORT || 9203, process.env.HOST);
}
`, ` => loopback 9203
PORT=6203 => loopback 6203`},
	{"set -a and source", `-- Procfile --
web: sh run.sh
-- requirements.txt --
-- .env --
# dome
HOST=127.0.0.1
PORT=${PORT:-8701}
-- run.sh --
#!/bin/sh
set -a
. ./.env
set +a
exec python3 s.py
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
HTTPServer((os.environ.get("HOST", ""), int(os.environ.get("PORT", 1))), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8701
PORT=5701 => loopback 5701`},
	{"export of xargs", `-- Procfile --
web: bash run.sh
-- requirements.txt --
-- .env --
# dome
HOST=127.0.0.1
PORT=8702
-- run.sh --
#!/bin/bash
if [ -f .env ]; then
  export $(grep -v '^#' .env | xargs)
fi
exec python3 s.py
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
HTTPServer((os.environ.get("HOST", ""), int(os.environ.get("PORT", 1))), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8702
PORT=5702 => loopback 8702`},
	{"not exported", `-- Procfile --
web: bash bin/run.sh
-- requirements.txt --
-- .env --
HOST=127.0.0.1
PORT=8703
-- bin/run.sh --
#!/usr/bin/env bash
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
[[ -f .env ]] && source .env
exec python3 s.py
-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
HTTPServer((os.environ.get("HOST", ""), int(os.environ.get("PORT", 8704))), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8704
PORT=5703 => any 8703`},
	{"functions from a file", `-- Procfile --
web: sh bin/web
-- requirements.txt --
-- bin/lib.sh --
default() { eval "echo \${$1:-$2}"; }
start() {
  exec python3 -m http.server --bind 0.0.0.0 "$PORT"
}
: "${PORT:=8705}"
-- bin/web --
#!/bin/sh
. "$(dirname "$0")/lib.sh"
start
`, ` => any 8705
PORT=5704 => any 5704`},
	{"make run with needs and override", `-- Procfile --
web: make run PORT=$PORT
-- requirements.txt --
-- Makefile --
.DEFAULT_GOAL := help
PYTHON ?= python3
ARGS = --bind $(HOST) \
	-d public
HOST ?= 127.0.0.1
export MODE = prod

help:
	@echo "run, test"

check: ; @echo checked

run: check public/index.html ## serves
	@$(PYTHON) -m http.server $(PORT) $(ARGS)
-- public/index.html --
x
`, `PORT=5801 => loopback 5801
PORT=5802 HOST=0.0.0.0 => any 5802`},
	{"make default target and exported", `-- Procfile --
web: make
-- package.json --
{"name":"a"}
-- Makefile --
PORT ?= 8803
export PORT
export HOST := localhost
NODE = node
serve:
	@echo "on $(PORT)"
	cd src && $(NODE) server.js
-- src/server.js --
require('http').createServer().listen(process.env.PORT, process.env.HOST);
`, ` => loopback 8803
PORT=5803 => loopback 5803`},
	{"makefile beats the environment", `-- Procfile --
web: make -s serve
-- package.json --
{"name":"a"}
-- Makefile --
PORT = 8804
serve:
	node server.js $(PORT)
-- server.js --
require('http').createServer().listen(process.env.PORT || process.argv[2], '127.0.0.1');
`, ` => loopback 8804
PORT=5804 => loopback 8804`},
	{"shell variables in recipes", `-- Procfile --
web: make serve
-- package.json --
{"name":"a"}
-- Makefile --
serve:
	export HOST=127.0.0.1; exec node server.js $${PORT:-8805}
-- server.js --
require('http').createServer().listen(process.argv[2], process.env.HOST);
`, ` => loopback 8805
PORT=5805 => loopback 5805`},
	{"decouple casts", `-- Procfile --
web: python3 a.py
-- requirements.txt --
python-decouple
-- .env --
HOST=127.0.0.1
-- a.py --
from decouple import AutoConfig, Csv
from http.server import HTTPServer, BaseHTTPRequestHandler
config = AutoConfig()
PORT = config('PORT', default='8911', cast=int)
ALLOWED = config('ALLOWED', default='a, b', cast=Csv())
HOST = '0.0.0.0' if config('PUBLIC', default=False, cast=bool) else config('HOST')
assert len(ALLOWED) == 2
HTTPServer((HOST, PORT), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8911
PORT=5911 PUBLIC=on => any 5911
PORT=x => exits`},
	{"envalid in a function with own validator", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"envalid":"^8"}}
-- config.js --
const { cleanEnv, str, port, num } = require('envalid');
module.exports = function load() {
  const env = cleanEnv(process.env, {
    NODE_ENV: str({ choices: ['development', 'test', 'production'], default: 'development' }),
    PORT: port({ default: 8901, desc: 'x' }),
    TIMEOUT: num({ default: 5 }),
  });
  return { port: env.PORT, host: env.isProduction ? '0.0.0.0' : '127.0.0.1', dev: env.isDev };
};
-- a.js --
const config = require('./config')();
require('http').createServer().listen(config.port, config.host);
`, ` => loopback 8901
PORT=5901 => loopback 5901
PORT=x => exits
NODE_ENV=production PORT=5902 => any 5902
NODE_ENV=wrong => exits`},
	{"flag func and list", `-- Procfile --
web: ./a -listen 127.0.0.1:5921 -listen=:5922 -v
-- go.mod --
module a

go 1.25
-- main.go --
package main

import (
	"flag"
	"fmt"
	"log"
	"net/http"
	"strings"
)

type addrs []string

func (a *addrs) String() string     { return strings.Join(*a, ",") }
func (a *addrs) Set(s string) error { *a = append(*a, s); return nil }

func main() {
	var list addrs
	verbose := false
	flag.Var(&list, "listen", "addresses")
	flag.BoolFunc("v", "verbose", func(string) error { verbose = true; return nil })
	flag.Parse()
	if len(list) == 0 || !verbose {
		log.Fatal("none")
	}
	errs := make(chan error)
	for _, a := range list {
		go func() { errs <- http.ListenAndServe(a, nil) }()
	}
	fmt.Println(<-errs)
}
`, ` => any 5922 & loopback 5921`},
	{"bottle star", `-- Procfile --
web: python3 a.py
-- requirements.txt --
bottle
-- a.py --
from bottle import *
from os import environ


@route('/')
def index():
    return 'x'


run(host='0.0.0.0', port=int(environ.get('PORT', 8511)))
`, ` => any 8511
PORT=5511 => any 5511`},
	{"flask star and settings star", `-- Procfile --
web: python3 a.py
-- requirements.txt --
flask
-- settings.py --
import os
HOST = '127.0.0.1'
PORT = int(os.getenv('PORT', '8512'))
-- a.py --
from flask import *
from settings import *

app = Flask(__name__)
app.run(HOST, PORT)
`, ` => loopback 8512
PORT=5512 => loopback 5512`},
	{"os and http star", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
from os import *
from http.server import *

server = ThreadingHTTPServer(('', int(environ.get('PORT', 8513))), SimpleHTTPRequestHandler)
server.serve_forever()
`, ` => any 8513
PORT=5513 => any 5513`},
	{"uvicorn", `-- Procfile --
web: uvicorn a:app --port $PORT
-- requirements.txt --
uvicorn
-- a.py --
async def app(scope, receive, send):
    pass
`, `PORT=65541 => exits
PORT=04700 => loopback 4700`},
	{"uvicorn.run", `-- Procfile --
web: python3 a.py
-- requirements.txt --
uvicorn
-- a.py --
import os, uvicorn
async def app(scope, receive, send):
    pass
uvicorn.run(app, port=int(os.environ['PORT']))
`, `PORT=65541 => exits`},
	{"hypercorn", `-- Procfile --
web: hypercorn a:app -b 127.0.0.1:$PORT
-- requirements.txt --
hypercorn
-- a.py --
async def app(scope, receive, send):
    pass
`, `PORT=70000 => exits`},
	{"gunicorn", `-- Procfile --
web: gunicorn a:app -b 127.0.0.1:$PORT
-- requirements.txt --
gunicorn
-- a.py --
app = lambda e, s: []
`, `PORT=70000 => exits`},
	{"asyncio", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio, os
async def main():
    s = await asyncio.start_server(lambda r, w: w.close(), '127.0.0.1', int(os.environ['PORT']))
    await s.serve_forever()
asyncio.run(main())
`, `PORT=70000 => exits`},
	{"bottle", `-- Procfile --
web: python3 a.py
-- requirements.txt --
bottle
-- a.py --
import os, bottle
bottle.run(port=int(os.environ['PORT']))
`, `PORT=70000 => exits`},
	{"flask run", `-- Procfile --
web: flask --app a run --port $PORT
-- requirements.txt --
flask
-- a.py --
from flask import Flask
app = Flask(__name__)
`, `PORT=70000 => loopback 4464`},
	{"runserver", `-- Procfile --
web: python3 manage.py runserver $PORT --noreload
-- requirements.txt --
django
-- manage.py --
import os, sys
os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'cfg')
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- cfg.py --
SECRET_KEY = 'a'
DEBUG = True
ROOT_URLCONF = 'urls'
-- urls.py --
urlpatterns = []
`, `PORT=70000 => exits
PORT=08123 => loopback 8123`},
	{"daphne", `-- Procfile --
web: daphne -p $PORT a:app
-- requirements.txt --
daphne
-- a.py --
async def app(scope, receive, send):
    pass
`, `PORT=70000 => exits`},
	{"puma -p", `-- Procfile --
web: puma -p $PORT
-- Gemfile --
gem 'puma'
-- config.ru --
run ->(e) { [200, {}, []] }
`, `PORT=70000 => any 4464
PORT=04701 => any 4701
PORT=08124 => any 8124`},
	{"puma config", `-- Procfile --
web: puma
-- Gemfile --
gem 'puma'
-- config.ru --
run ->(e) { [200, {}, []] }
-- config/puma.rb --
port ENV.fetch('PORT', 3000)
`, `PORT=70000 => any 4464
PORT=04702 => any 2498`},
	{"puma bind", `-- Procfile --
web: puma -b tcp://127.0.0.1:$PORT
-- Gemfile --
gem 'puma'
-- config.ru --
run ->(e) { [200, {}, []] }
`, `PORT=70000 => loopback 4464
PORT=04703 => loopback 4703`},
	{"rackup webrick", `-- Procfile --
web: rackup -s webrick -p $PORT
-- Gemfile --
gem 'rack'
gem 'webrick'
-- config.ru --
run ->(e) { [200, {}, []] }
`, `PORT=70000 => loopback 4464`},
	{"tcpserver text", `-- Procfile --
web: ruby a.rb
-- Gemfile --
gem 'rack'
-- a.rb --
require 'socket'
s = TCPServer.new('127.0.0.1', ENV['PORT'])
loop { s.accept.close }
`, `PORT=70000 => loopback 4464
PORT=04705 => loopback 4705
PORT=0x1261 => exits
PORT=08125 => loopback 8125`},
	{"webrick text", `-- Procfile --
web: ruby a.rb
-- Gemfile --
gem 'webrick'
-- a.rb --
require 'webrick'
WEBrick::HTTPServer.new(Port: ENV['PORT'], BindAddress: '127.0.0.1').start
`, `PORT=04706 => exits
PORT=70000 => loopback 4464`},
	{"unicorn listen", `-- Procfile --
web: unicorn -p $PORT
-- Gemfile --
gem 'unicorn'
-- config.ru --
run ->(e) { [200, {}, []] }
`, `PORT=70000 => any 4464`},
	{"thin", `-- Procfile --
web: thin start -p $PORT
-- Gemfile --
gem 'thin'
-- config.ru --
run ->(e) { [200, {}, []] }
`, `PORT=70000 => any 4464
PORT=04709 => any 4709`},
	{"php -S", `-- Procfile --
web: php -S 127.0.0.1:$PORT
-- composer.json --
{"name":"a/b"}
`, `PORT=70000 => exits
PORT=04710 => loopback 4710`},
	{"php stream", `-- Procfile --
web: php s.php
-- composer.json --
{"name":"a/b"}
-- s.php --
<?php
$s = stream_socket_server('tcp://127.0.0.1:' . getenv('PORT')) or exit(1);
while (true) { @stream_socket_accept($s, 5); }
`, `PORT=70000 => loopback 4464
PORT=04711 => loopback 4711`},
	{"bun text", `-- Procfile --
web: bun s.ts
-- package.json --
{"name":"a"}
-- s.ts --
Bun.serve({ fetch: () => new Response('x') });
`, `PORT=70000 => any 3000
PORT=04712 => any 4712`},
	{"deno number", `-- Procfile --
web: deno run -A s.ts
-- deno.json --
{}
-- s.ts --
Deno.serve({ port: Number(Deno.env.get('PORT')) }, () => new Response('x'));
`, `PORT=70000 => exits`},
	{"deno flag", `-- Procfile --
web: deno serve --port $PORT s.ts
-- deno.json --
{}
-- s.ts --
export default { fetch() { return new Response('x'); } };
`, `PORT=70000 => exits
PORT=04713 => any 4713`},
	{"serve", `-- Procfile --
web: serve -l $PORT public
-- package.json --
{"name":"a","dependencies":{"serve":"^14"}}
-- public/index.html --
x
`, `PORT=70000 => exits
PORT=04714 => any 4714
PORT=abc => exits`},
	{"http-server", `-- Procfile --
web: http-server public -p $PORT
-- package.json --
{"name":"a","dependencies":{"http-server":"^14"}}
-- public/index.html --
x
`, `PORT=70000 => exits
PORT=04715 => any 4715
PORT=abc => unix:abc`},
	{"go text", `-- Procfile --
web: ./a
-- go.mod --
module a

go 1.25
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() { panic(http.ListenAndServe(":"+os.Getenv("PORT"), nil)) }
`, `PORT=04716 => any 4716
PORT=70000 => exits`},
	{"php precedence", `-- Procfile --
web: php s.php
-- composer.json --
{"name":"a/b"}
-- s.php --
<?php
$a = getenv('NOPE') ?: null;
$p = $a ?? getenv('PORT') ?: '9062';
$q = (int) ($a ?? getenv('PORT') ?: '9063');
$s = stream_socket_server('tcp://127.0.0.1:' . ($q > 6000 ? $q : 9064));
$t = stream_socket_server('tcp://127.0.0.1:' . ($p === '9062' ? 9062 : 9065));
while (true) { @stream_socket_accept($s, 5); }
`, ` => loopback 9062 & loopback 9063
PORT= => loopback 9062 & loopback 9063
PORT=5 => loopback 9064 & loopback 9065`},
	{"php elvis after others", `-- Procfile --
web: php s.php
-- composer.json --
{"name":"a/b"}
-- s.php --
<?php
$env = ['PORT' => getenv('PORT') === false ? null : getenv('PORT')];
$port = $env['PORT'] ?? '' ?: '9072';
$text = '' . getenv('NOPE') ?: '9073';
$ok = $port == '9072' || $text == 'x' ?: 5;
$s = stream_socket_server('tcp://' . (getenv('HOST') ?: '127.0.0.1') . ':' . $port);
$t = stream_socket_server('tcp://127.0.0.1:' . ($ok === 5 ? 9074 : $text));
while (true) { @stream_socket_accept($s, 5); }
`, ` => loopback 9072 & loopback 9073
PORT= => loopback 9072 & loopback 9073
PORT=7777 HOST=0.0.0.0 => any 7777 & loopback 9074`},
	{"to thread", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os
from http.server import HTTPServer, BaseHTTPRequestHandler


def serve(port, host=""):
    HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()


async def main():
    port = await asyncio.to_thread(lambda: int(os.environ.get("PORT", 9401)))
    await asyncio.gather(asyncio.to_thread(serve, port, host="127.0.0.1"), asyncio.sleep(3600))

asyncio.run(main())
`, ` => loopback 9401
PORT=6301 => loopback 6301`},
	{"in an executor", `-- Procfile --
web: python3 a.py
-- requirements.txt --
-- a.py --
import asyncio
import os
from wsgiref.simple_server import make_server


def serve(port):
    make_server("", port, None).serve_forever()


async def main():
    loop = asyncio.get_running_loop()
    await loop.run_in_executor(None, serve, int(os.environ.get("PORT", "9402")))

asyncio.run(main())
`, ` => any 9402
PORT=6302 => any 6302`},
}

func TestUnmet(t *testing.T) {
	t.Parallel()
	agree(t, unmet)
}

// told is a tree, and what the survey says of its web process: a line for each
// environment, NAME=VALUE … => outcome.
type told struct{ name, tree, want string }

// agree surveys each tree under the environments that stand beside it.
func agree(t *testing.T, cases []told) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			dir := plant(t, c.tree)
			for line := range strings.SplitSeq(c.want, "\n") {
				env, want, _ := strings.Cut(line, " => ")
				if got := allOutcomes(run(t, dir, quotedEnv(env)).Components[0].Starts); got != want {
					t.Errorf("under %q the survey says %s, not %s", env, got, want)
				}
			}
		})
	}
}

// quotedEnv reads NAME=VALUE …, where a value may stand in quotes.
func quotedEnv(text string) map[string]string {
	with := map[string]string{"SKY": "clear"}
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimSpace(text) {
		k, rest, _ := strings.Cut(text, "=")
		v := ""
		if inner, ok := strings.CutPrefix(rest, "'"); ok {
			v, text, _ = strings.Cut(inner, "'")
		} else {
			v, text, _ = strings.Cut(rest, " ")
		}
		with[k] = v
	}
	return with
}

// allOutcomes is what the listeners of a process file do together.
func allOutcomes(starts []*fact.Start) string {
	var got []string
	for _, s := range starts {
		for _, l := range s.Listeners {
			if s.Source != "process file" || l.View.Under.Outcome == "skipped" {
				continue
			}
			said := say(*l.View.Under)
			if p, ok := strings.CutPrefix(said, "unix:"); ok {
				said = "unix:" + path.Base(p)
			}
			got = append(got, said)
		}
	}
	for _, one := range []string{"exits", "unknown"} {
		if slices.Contains(got, one) {
			return one
		}
	}
	slices.Sort(got)
	if got = slices.Compact(got); len(got) == 0 {
		return "nothing"
	}
	return strings.Join(got, " & ")
}
