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
}

func TestCommandServers(t *testing.T) {
	t.Parallel()
	agree(t, commandServers)
}
