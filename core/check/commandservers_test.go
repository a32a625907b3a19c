package check_test

import "testing"

// commandServers are servers that a command starts by itself, with its flags and the files of settings
// that it names; each was run, and what it did was read from the kernel.
var commandServers = []told{
	{"unicorn with config", `-- Procfile --
web: unicorn -c config/unicorn.rb config.ru
-- config/unicorn.rb --
worker_processes 1
listen ENV.fetch('PORT', 6901).to_i
timeout 30
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => any 6901
PORT=8901 => any 8901`},
	{"unicorn flags", `-- Procfile --
web: unicorn -l 127.0.0.1:${PORT:-6902} -E production
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => loopback 6902
PORT=8902 => loopback 8902`},
	{"unicorn several listen and socket", `-- Procfile --
web: unicorn -c unicorn.rb
-- unicorn.rb --
listen '0.0.0.0:6903'
listen File.expand_path('u3.sock', __dir__), backlog: 64
worker_processes 1
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => any 6903 & unix:u3.sock`},
	{"thin with config file", `-- Procfile --
web: thin start -C config/thin.yml
-- config/thin.yml --
address: 127.0.0.1
port: 6904
environment: production
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => loopback 6904`},
	{"thin flags", `-- Procfile --
web: thin -R config.ru -a 0.0.0.0 -p ${PORT:-6905} start
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => any 6905
PORT=8905 => any 8905`},
	{"php long options", `-- Procfile --
web: php --server 0.0.0.0:${PORT:-6906} --docroot www
-- www/index.php --
<?php echo 1;
`, ` => any 6906
PORT=8906 => any 8906`},
	{"waitress call with listen list", `-- Procfile --
web: waitress-serve --listen=127.0.0.1:6907 --listen=*:${PORT:-6908} --call app:make
-- app.py --
def make():
    def app(environ, start_response):
        start_response("200 OK", [])
        return [b""]
    return app
`, ` => any 6908 & loopback 6907
PORT=8908 => any 8908 & loopback 6907`},
	{"gunicorn several binds and env args", `-- Procfile --
web: GUNICORN_CMD_ARGS="--bind 127.0.0.1:6909" gunicorn -b 0.0.0.0:${PORT:-6910} app:app
-- app.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b""]
`, ` => any 6910
PORT=8910 => any 8910`},
	{"daphne endpoint", `-- Procfile --
web: daphne -e tcp:port=6915:interface=127.0.0.1 app:app
-- app.py --
async def app(scope, receive, send): pass
`, ` => loopback 6915`},
	{"daphne unix and port", `-- Procfile --
web: daphne -u d.sock -p 6916 app:app
-- app.py --
async def app(scope, receive, send): pass
`, ` => loopback 6916 & unix:d.sock`},
	{"flask run options", `-- Procfile --
web: flask --app web:create_app run -h 0.0.0.0 -p ${PORT:-6917} --no-reload
-- web.py --
from flask import Flask
def create_app():
    return Flask(__name__)
`, ` => any 6917
PORT=8917 => any 8917`},
	{"ruby un httpd", `-- Procfile --
web: ruby -run -e httpd public -p ${PORT:-6928} -b 127.0.0.1
-- public/index.html --
x
`, ` => loopback 6928
PORT=8928 => loopback 8928`},
	{"rackup env", `-- Procfile --
web: rackup -E production -p ${PORT:-6929}
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => any 6929
PORT=8929 => any 8929`},
	{"busybox style sh loop", `-- Procfile --
web: bash -c 'trap "exit 0" TERM; node srv.js & wait $!'
-- package.json --
{"name":"a"}
-- srv.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 6935);
`, ` => any 6935
PORT=8935 => any 8935`},
	{"exec with default and export file", `-- Procfile --
web: sh -c '. ./env.sh && exec python3 -m http.server "$PORT"'
-- env.sh exec --
: "${PORT:=6936}"
export PORT
`, ` => any 6936
PORT=8936 => any 8936`},
	{"make target", `-- Procfile --
web: make -s run
-- Makefile --
PORT ?= 6937
.PHONY: run
run:
	@python3 -m http.server $(PORT) --bind 127.0.0.1
`, ` => loopback 6937
PORT=8937 => loopback 8937`},
	{"npm run with args", `-- Procfile --
web: npm run serve -- --port 6938
-- package.json --
{"name":"a","scripts":{"serve":"node s.js --host 0.0.0.0"}}
-- s.js --
const a = process.argv.slice(2);
const get = (n, d) => { const i = a.indexOf(` + "`" + `--${n}` + "`" + `); return i < 0 ? d : a[i + 1]; };
require('http').createServer((q, r) => r.end()).listen(Number(get('port', 5938)), get('host', '127.0.0.1'));
`, ` => any 6938`},
	{"unset in a script", `-- Procfile --
web: sh start.sh
-- start.sh exec --
#!/bin/sh
unset HOST
export NAME=gate
exec node server.js
-- package.json --
{"name":"a"}
-- server.js --
const http = require('http');
const { HOST } = process.env;
http.createServer((q, r) => r.end()).listen(process.env.PORT || 7101, HOST);
`, ` => any 7101
PORT=8101 HOST=127.0.0.1 => any 8101`},
	{"env clears and sets", `-- Procfile --
web: env -i PATH=/usr/bin:/bin PORT=7102 python3 s.py
-- s.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler
HTTPServer((os.environ.get("HOST", "127.0.0.1"), int(os.environ["PORT"])), SimpleHTTPRequestHandler).serve_forever()
`, ` => loopback 7102
PORT=8102 HOST=0.0.0.0 => loopback 7102`},
	{"env clears what must be there", `-- Procfile --
web: env -i PATH=/usr/bin:/bin python3 s.py
-- s.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler
HTTPServer(("", int(os.environ["PORT"])), SimpleHTTPRequestHandler).serve_forever()
`, ` => exits
PORT=8103 => exits`},
	{"gunicorn without the variable", `-- Procfile --
web: env -u PORT gunicorn app:app
-- app.py --
def app(e, s):
    s("200 OK", []); return [b""]
`, ` => loopback 8000
PORT=8104 => loopback 8000`},
	{"unset then default of the shell", `-- Procfile --
web: unset PORT; python3 -m http.server ${PORT:-7105}
-- index.html --
x
`, ` => any 7105
PORT=8105 => any 7105`},
	{"puma without its variable", `-- Procfile --
web: env --unset=PORT puma
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 9292
PORT=8106 => any 9292`},
	{"loops over names", `-- Procfile --
web: node server.js
-- package.json --
{"name":"a"}
-- server.js --
let port;
for (const n of ['A_PORT', 'B_PORT']) { if (process.env[n]) { port = process.env[n]; break; } }
require('http').createServer((q, r) => r.end()).listen(port || 7107);
`, ` => any 7107
A_PORT=8107 => any 8107`},
	{"gunicorn joined short flag", `-- Procfile --
web: gunicorn -b0.0.0.0:${PORT:-7001} -w1 app:app
-- app.py --
def app(e, s):
    s("200 OK", []); return [b""]
`, ` => any 7001
PORT=8001 => any 8001`},
	{"gunicorn pythonpath and chdir", `-- Procfile --
web: gunicorn --chdir src --bind :${PORT:-7004} web.wsgi
-- src/web/__init__.py --
-- src/web/wsgi.py --
def application(e, s):
    s("200 OK", []); return [b""]
`, ` => any 7004
PORT=8004 => any 8004`},
	{"uvicorn workers env", `-- Procfile --
web: WEB_CONCURRENCY=1 uvicorn main:app --port 7005 --host ${HOST:-0.0.0.0}
-- main.py --
async def app(scope, receive, send): pass
`, ` => any 7005
HOST=127.0.0.1 => loopback 7005`},
	{"hypercorn several", `-- Procfile --
web: hypercorn app:app -b 127.0.0.1:7007 -b "[::1]:7008" --workers 1
-- app.py --
async def app(scope, receive, send): pass
`, ` => loopback 7007 & loopback 7008`},
	{"puma binds and port", `-- Procfile --
web: puma -b tcp://127.0.0.1:7011 -p ${PORT:-7012} -t 1:1
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 7012 & loopback 7011
PORT=8012 => any 8012 & loopback 7011`},
	{"puma with rack file elsewhere", `-- Procfile --
web: puma -p ${PORT:-7014} web/config.ru
-- web/config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 7014
PORT=8014 => any 8014`},
	{"puma default", `-- Procfile --
web: puma
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 9292
PORT=8015 => any 9292`},
	{"rackup server choice", `-- Procfile --
web: rackup -s thin -o 0.0.0.0 -p 7017
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 7017`},
	{"rackup default production", `-- Procfile --
web: RACK_ENV=production rackup
-- config.ru --
run proc { [200, {}, ['x']] }
`, ` => any 9292
PORT=8018 => any 9292`},
	{"wrappers", `-- Procfile --
web: env NODE_ENV=production nice -n 5 timeout 100 node server.js
-- package.json --
{"name":"a"}
-- server.js --
const p = process.env.NODE_ENV === 'production' ? process.env.PORT || 7021 : 5021;
require('http').createServer((q, r) => r.end()).listen(p);
`, ` => any 7021
PORT=8021 => any 8021`},
	{"setsid and stdbuf", `-- Procfile --
web: setsid -w stdbuf -oL python3 -u srv.py
-- srv.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler
HTTPServer(("127.0.0.1", int(os.environ.get("PORT", 7022))), SimpleHTTPRequestHandler).serve_forever()
`, ` => loopback 7022
PORT=8022 => loopback 8022`},
	{"env cleared", `-- Procfile --
web: env -i PATH="$PATH" node server.js
-- package.json --
{"name":"a"}
-- server.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7023);
`, ` => any 7023
PORT=8023 => any 7023`},
	{"env unset", `-- Procfile --
web: env -u PORT node server.js
-- package.json --
{"name":"a"}
-- server.js --
require('http').createServer((q, r) => r.end()).listen(process.env.PORT || 7024);
`, ` => any 7024
PORT=8024 => any 7024`},
	{"arithmetic", `-- Procfile --
web: python3 -m http.server $((${BASE:-7000} + 27))
-- index.html --
x
`, ` => any 7027
BASE=8000 => any 8027`},
	{"npm script with env and cross-env", `-- Procfile --
web: npm run start:prod
-- package.json --
{"name":"a","scripts":{"start:prod":"cross-env NODE_ENV=production HOST=127.0.0.1 node server.js"},"devDependencies":{"cross-env":"^7"}}
-- server.js --
const { PORT = 7029, HOST = '0.0.0.0' } = process.env;
require('http').createServer((q, r) => r.end()).listen(PORT, HOST);
`, ` => loopback 7029
PORT=8029 => loopback 8029`},
	{"python -c", `-- Procfile --
web: python3 -c "import http.server,os; http.server.test(port=int(os.getenv('PORT','7032')), bind='127.0.0.1')"
-- index.html --
x
`, ` => loopback 7032
PORT=8032 => loopback 8032`},
	{"sh script with getopts", `-- Procfile --
web: ./serve.sh -p 7041 -b 0.0.0.0
-- serve.sh exec --
#!/bin/sh
set -eu
port=${PORT:-5041}
bind=127.0.0.1
while getopts p:b: opt; do
  case $opt in
    p) port=$OPTARG ;;
    b) bind=$OPTARG ;;
    *) exit 2 ;;
  esac
done
exec python3 -m http.server "$port" --bind "$bind"
`, ` => any 7041
PORT=8041 => any 7041`},
}

func TestCommandServers(t *testing.T) {
	t.Parallel()
	agree(t, commandServers)
}
