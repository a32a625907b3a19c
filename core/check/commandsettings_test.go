package check_test

import "testing"

// commandSettings are commands that find their settings and their programs in files; each was run, and
// what it did was read from the kernel.
var commandSettings = []told{
	{"gunicorn conf imports package", `-- Procfile --
web: gunicorn -c deploy/gunicorn.py sky:app
-- deploy/gunicorn.py --
import os
import sys

sys.path.insert(0, os.path.dirname(os.path.dirname(os.path.abspath(__file__))))
from skyconf import server

bind = "%s:%s" % server(os.environ)
workers = int(os.environ.get("WEB_CONCURRENCY", 1))


def on_starting(server):
    server.log.info("starting")
-- skyconf.py --
def server(env):
    if env.get("STAGE") == "local":
        return "127.0.0.1", 5201
    return "0.0.0.0", env.get("PORT", 7201)
-- sky.py --
def app(e, s):
    s("200 OK", []); return [b""]
`, ` => any 7201
PORT=8201 => any 8201
PORT=8201 STAGE=local => loopback 5201`},
	{"gunicorn raw env and conf", `-- Procfile --
web: gunicorn --config=gunicorn.conf.py --env SKY=1 app
-- gunicorn.conf.py --
import os
_port = os.getenv("PORT")
bind = []
if _port:
    bind.append("0.0.0.0:" + _port)
bind.append("127.0.0.1:7202")
-- app.py --
def application(e, s):
    s("200 OK", []); return [b""]
`, ` => loopback 7202
PORT=8202 => any 8202 & loopback 7202`},
	{"puma conf with branches", `-- Procfile --
web: puma -C config/puma.rb
-- config/puma.rb --
# frozen_string_literal: true
max_threads = ENV.fetch('MAX_THREADS', 2).to_i
threads max_threads, max_threads
environment ENV.fetch('RACK_ENV', 'development')
preload_app!
if ENV['SOCKET']
  bind "unix://#{File.expand_path('../puma.sock', __dir__)}"
elsif ENV['RACK_ENV'] == 'production'
  port ENV.fetch('PORT', 7205), '0.0.0.0'
else
  port 5205, '127.0.0.1'
end
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => loopback 5205
RACK_ENV=production => any 7205
RACK_ENV=production PORT=8205 => any 8205
SOCKET=1 => unix:puma.sock`},
	{"puma conf each", `-- Procfile --
web: puma
-- config/puma.rb --
ENV.fetch('PORTS', '7206').split(',').each { |p| bind "tcp://0.0.0.0:#{p}" }
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 7206
PORTS=8206,8207 => any 8206 & any 8207`},
	{"django manage with settings by flag", `-- Procfile --
web: python3 manage.py runserver --settings=conf.live --noreload
-- manage.py --
import os, sys
from django.core.management import execute_from_command_line
if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "conf.local")
    execute_from_command_line(sys.argv)
-- conf/__init__.py --
-- conf/base.py --
SECRET_KEY = "x"
ROOT_URLCONF = "conf.urls"
ALLOWED_HOSTS = ["*"]
-- conf/live.py --
from .base import *
DEBUG = True
-- conf/urls.py --
urlpatterns = []
`, ` => loopback 8000
DJANGO_PORT=8211 => loopback 8000`},
	{"django custom command", `-- Procfile --
web: python3 manage.py serve --port 7212
-- manage.py --
import os, sys
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "conf")
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- conf.py --
SECRET_KEY = "x"
INSTALLED_APPS = ["web"]
ROOT_URLCONF = "conf"
urlpatterns = []
-- web/__init__.py --
-- web/management/__init__.py --
-- web/management/commands/__init__.py --
-- web/management/commands/serve.py --
import os
from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "serve"

    def add_arguments(self, parser):
        parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", 5212)))

    def handle(self, *args, **options):
        from waitress import serve
        from django.core.wsgi import get_wsgi_application
        serve(get_wsgi_application(), host="127.0.0.1", port=options["port"])
`, ` => loopback 7212
PORT=8212 => loopback 7212`},
	{"makefile with include and export", `-- Procfile --
web: make serve
-- Makefile --
include conf.mk
export HOST
.DEFAULT_GOAL := serve

serve: check
	node server.js

check:
	@test -f server.js
-- conf.mk --
PORT ?= 7215
HOST := 127.0.0.1
export PORT
-- package.json --
{"name":"a"}
-- server.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT, process.env.HOST);
`, ` => loopback 7215
PORT=8215 => loopback 8215`},
	{"cd then start", `-- Procfile --
web: cd services/api && exec node --env-file-if-exists=.env src/index.js
-- services/api/package.json --
{"name":"api"}
-- services/api/.env --
PORT=7217
-- services/api/src/index.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 5217);
`, ` => any 7217
PORT=8217 => any 8217`},
	{"functions and source", `-- Procfile --
web: bash run.sh web
-- run.sh exec --
#!/usr/bin/env bash
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
source lib/common.sh
main() {
  local what=${1:-help}
  shift || true
  case "$what" in
    web) serve "$(port)" ;;
    *) echo "usage: $0 web"; exit 64 ;;
  esac
}
main "$@"
-- lib/common.sh exec --
port() { printf '%s' "${PORT:-7220}"; }
serve() { exec python3 -m http.server "$1" --bind 0.0.0.0; }
`, ` => any 7220
PORT=8220 => any 8220`},
	{"concurrently one server and a worker", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"concurrently -k \"npm:web\" \"npm:jobs\"","web":"node web.js","jobs":"node jobs.js"},"dependencies":{"concurrently":"^8"}}
-- web.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7222);
-- jobs.js --
setInterval(() => {}, 1000);
`, ` => any 7222
PORT=8222 => any 8222`},
	{"npm-run-all parallel", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"run-p web jobs","web":"node web.js","jobs":"node jobs.js"},"dependencies":{"npm-run-all":"^4"}}
-- web.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7223, '127.0.0.1');
-- jobs.js --
setInterval(() => {}, 1000);
`, ` => loopback 7223
PORT=8223 => loopback 8223`},
	{"run-s build then start", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"run-s prepare:data serve","prepare:data":"node -e \"0\"","serve":"node web.js"},"dependencies":{"npm-run-all":"^4"}}
-- web.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7224);
`, ` => any 7224
PORT=8224 => any 8224`},
	{"several beside each other with flags", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"concurrently --kill-others -n web,admin \"node web.js --fast\" \"node admin.js\""},"dependencies":{"concurrently":"^8"}}
-- web.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7301);
-- admin.js --
require('http').createServer((q, r) => r.end()).listen(7302, '127.0.0.1');
`, ` => any 7301 & loopback 7302
PORT=8301 => any 8301 & loopback 7302`},
	{"npm-run-all in sequence", `-- Procfile --
web: npm start
-- package.json --
{"name":"a","scripts":{"start":"npm-run-all ready web","ready":"node -e 0","web":"node web.js"},"dependencies":{"npm-run-all":"^4"}}
-- web.js --
require('http').createServer((q, r) => r.end()).listen(7304, '0.0.0.0');
`, ` => any 7304`},
	{"procfile with shell and default port file", `-- Procfile --
web: bash -lc 'PORT=${PORT:-$(cat .port)} exec node index.js'
-- package.json --
{"name":"a"}
-- .port --
7702
-- index.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT, '0.0.0.0');
`, ` => any 7702
PORT=9402 => any 9402`},
	{"wait for it then exec", `-- Procfile --
web: ./bin/entry node server.js --verbose
-- package.json --
{"name":"a"}
-- bin/entry exec --
#!/bin/sh
set -e
[ -n "$PORT" ] || export PORT=7703
[ "${SKIP:-}" = 1 ] || echo "starting $1"
exec "$@"
-- server.js --
const verbose = process.argv.includes('--verbose');
require('http').createServer((q, r) => r.end()).listen(process.env.PORT, verbose ? '127.0.0.1' : '0.0.0.0');
`, ` => loopback 7703
PORT=9403 => loopback 9403`},
	{"puma behind bundle exec with env port twice", `-- Procfile --
web: bundle exec puma -t 1:2 -b tcp://0.0.0.0:${PORT-7706} -e ${RACK_ENV:-production}
-- Gemfile --
source 'https://rubygems.org'
gem 'puma'
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => any 7706
PORT=9406 => any 9406`},
	{"rackup with config in rack server block", `-- Procfile --
web: ruby server.rb -p 7707
-- server.rb --
require 'rack'
require 'optparse'
opts = { Port: 5707, Host: '127.0.0.1' }
OptionParser.new do |o|
  o.banner = 'usage: server'
  o.on('-p', '--port N', Integer, 'port') { |n| opts[:Port] = n }
  o.on('-a', '--all') { opts[:Host] = '0.0.0.0' }
end.parse!(ARGV)
Rack::Server.start({ app: ->(env) { [200, {}, ['x']] }, server: 'webrick' }.merge(opts))
`, ` => loopback 7707
PORT=9407 => loopback 7707`},
	{"makefile with variables override", `-- Procfile --
web: make run HOST=0.0.0.0
-- Makefile --
HOST = 127.0.0.1
PORT ?= 7709
run:
	exec python3 -m http.server --bind $(HOST) $(PORT)
`, ` => any 7709
PORT=9409 => any 9409`},
	{"waitress by module", `-- Procfile --
web: python3 -m waitress --port=${PORT:-7715} --host=127.0.0.1 app:app
-- app.py --
def app(e, s):
    s("200 OK", []); return [b""]
`, ` => loopback 7715
PORT=9415 => loopback 9415`},
	{"node server with systemd style fd unset", `-- Procfile --
web: env -u LISTEN_FDS node srv.js
-- package.json --
{"name":"a"}
-- srv.js --
const http = require('http');
const server = http.createServer((q, r) => r.end());
if (process.env.LISTEN_FDS) server.listen({ fd: 3 });
else server.listen(7716, '0.0.0.0');
`, ` => any 7716
LISTEN_FDS=1 => any 7716`},
	{"ruby tcp with config dsl file", `-- Procfile --
web: ruby -r ./lib/boot server.rb
-- lib/boot.rb --
ENV['PORT'] ||= '7718'
module Boot
  HOST = ENV.fetch('HOST', '0.0.0.0').freeze
end
-- server.rb --
require 'socket'
s = TCPServer.new(Boot::HOST, ENV['PORT'])
Thread.new { loop { sleep 60 } }
while (c = s.accept) do c.close end
`, ` => any 7718
PORT=9418 => any 9418`},
	{"two apps in one repository with chosen name", `-- Procfile --
web: node apps/$APP/index.js
-- package.json --
{"name":"a"}
-- apps/web/index.js --
require('../../lib/listen')(7719, '0.0.0.0');
-- apps/admin/index.js --
require('../../lib/listen')(7720, '127.0.0.1');
-- lib/listen.js --
module.exports = (port, host) => require('http').createServer((q, r) => r.end()).listen(process.env.PORT || port, host);
`, `APP=web => any 7719
APP=admin PORT=9419 => loopback 9419`},
}

func TestCommandSettings(t *testing.T) {
	t.Parallel()
	agree(t, commandSettings)
}
