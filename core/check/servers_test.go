package check_test

import (
	"fmt"
	"strings"
	"testing"

	"ubique/core/fact"
)

// templates are the smallest programs that start each server; FILL takes the
// arguments of a row.
var templates = map[string]struct{ files, start string }{
	"node": {`-- s.js --
const server = require('http').createServer();
server.listen(FILL);
`, "node s.js"},
	"express": {`-- s.js --
const app = require('express')();
app.listen(FILL);
`, "node s.js"},
	"koa": {`-- s.js --
const Koa = require('koa');
new Koa().listen(FILL);
`, "node s.js"},
	"fastify": {`-- s.js --
const app = require('fastify')();
app.listen(FILL);
`, "node s.js"},
	"hono": {`-- s.mjs --
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
const app = new Hono();
serve({ fetch: app.fetch, FILL });
`, "node s.mjs"},
	"socket.io": {`-- s.js --
const { Server } = require('socket.io');
const io = new Server(FILL);
`, "node s.js"},
	"gunicorn": {`-- app.py --
from flask import Flask
app = Flask(__name__)
`, "gunicorn FILL app:app"},
	"uvicorn": {`-- asgi.py --
from fastapi import FastAPI
app = FastAPI()
`, "uvicorn asgi:app FILL"},
	"hypercorn": {`-- asgi.py --
from fastapi import FastAPI
app = FastAPI()
`, "hypercorn asgi:app FILL"},
	"waitress": {`-- app.py --
from flask import Flask
app = Flask(__name__)
`, "waitress-serve FILL app:app"},
	"flask run": {`-- app.py --
from flask import Flask
app = Flask(__name__)
`, "flask run FILL"},
	"http.server": {"-- app.py --\n", "python -m http.server FILL"},
	"runserver":   {strings.Replace(djangoSite("DEBUG = False\nALLOWED_HOSTS = ['a']"), `os.environ["SECRET_KEY"]`, "'x'", 1), "python manage.py runserver FILL"},
	"uvicorn.run": {`-- s.py --
import uvicorn
from fastapi import FastAPI
app = FastAPI()
uvicorn.run(app, FILL)
`, "python s.py"},
	"waitress()": {`-- s.py --
from waitress import serve
from flask import Flask
serve(Flask(__name__), FILL)
`, "python s.py"},
	"aiohttp": {`-- s.py --
from aiohttp import web
web.run_app(web.Application(), FILL)
`, "python s.py"},
	"bottle": {`-- s.py --
import bottle
bottle.run(FILL)
`, "python s.py"},
	"tornado": {`-- s.py --
import tornado.web
tornado.web.Application([]).listen(FILL)
`, "python s.py"},
	"flask": {`-- s.py --
from flask import Flask
app = Flask(__name__)
app.run(FILL)
`, "python s.py"},
	"start_server": {`-- s.py --
import asyncio
async def main():
    await asyncio.start_server(None, FILL)
asyncio.run(main())
`, "python s.py"},
}

// measured are outcomes that were read from the kernel's sockets, 2026-11:
// server, arguments, environment, outcome.
const measured = `
gunicorn | | | loopback 8000
gunicorn | | PORT=5123 | any 5123
gunicorn | | PORT= | exits
gunicorn | | PORT=abc | exits
gunicorn | | PORT=5123 HOST=127.0.0.1 | any 5123
gunicorn | -b 0.0.0.0 | | any 8000
gunicorn | -b :5123 | | any 5123
gunicorn | -b 5123 | | exits
gunicorn | -b localhost:5123 | | loopback 5123
gunicorn | -b localhost | | loopback 8000
gunicorn | -b [::]:5123 | | any 5123
gunicorn | -b 0.0.0.0:0 | | any 0
gunicorn | -b tcp://0.0.0.0:5123 | | any 5123
gunicorn | -b 0.0.0.0:5123,127.0.0.1:5124 | | exits
gunicorn | -b 127.0.0.1:5200 | PORT=5123 | loopback 5200
gunicorn | -b unix:/tmp/dome.sock | | unix:/tmp/dome.sock
uvicorn | | | loopback 8000
uvicorn | | PORT=5123 | loopback 8000
uvicorn | | PORT= | loopback 8000
uvicorn | | HOST=0.0.0.0 | loopback 8000
uvicorn | | UVICORN_PORT=5200 | loopback 5200
uvicorn | | UVICORN_PORT= | loopback 8000
uvicorn | | UVICORN_HOST=0.0.0.0 | any 8000
uvicorn | | UVICORN_HOST= | loopback 8000
uvicorn | --port 5300 | UVICORN_PORT=5200 | loopback 5300
uvicorn | --host '' | | any 8000
uvicorn | --host :: | | any 8000
uvicorn | --host localhost | | loopback 8000
uvicorn | --port $PORT | | exits
uvicorn | --port $PORT | PORT= | exits
uvicorn | --port $PORT | PORT=5123 | loopback 5123
uvicorn | --port 0 | | loopback 0
hypercorn | | | loopback 8000
hypercorn | | PORT=5123 | loopback 8000
hypercorn | -b 0.0.0.0 | | any 8000
hypercorn | -b :5123 | | any 5123
hypercorn | -b 5123 | | exits
waitress | | | any 8080
waitress | | PORT=5123 | any 8080
waitress | --port=5200 | | any 5200
waitress() | | | any 8080
waitress() | port='5123' | | any 5123
waitress() | host='', port=5123 | | exits
waitress() | listen='*:5123' | | any 5123
flask run | | | loopback 5000
flask run | | PORT=5123 | loopback 5000
flask run | | FLASK_RUN_PORT=5200 | loopback 5200
flask run | | FLASK_RUN_PORT= | loopback 5000
flask run | | FLASK_RUN_HOST=0.0.0.0 | any 5000
flask run | --port 5300 | FLASK_RUN_PORT=5200 | loopback 5300
flask run | --host '' | | any 5000
runserver | | | loopback 8000
runserver | | PORT=5123 | loopback 8000
runserver | 0:5123 | | any 5123
runserver | 0.0.0.0 | | exits
runserver | :5123 | | exits
runserver | 0.0.0.0: | | exits
runserver | localhost:5123 | | loopback 5123
runserver | [::]:5123 | | any 5123
runserver | 5123 | | loopback 5123
runserver | 0.0.0.0:$PORT | PORT=5123 | any 5123
http.server | | | any 8000
http.server | | PORT=5123 | any 8000
http.server | 5123 --bind :: | | any 5123
http.server | 5123 --bind localhost | | loopback 5123
http.server | $PORT | | any 8000
uvicorn.run | | | loopback 8000
uvicorn.run | | PORT=5123 UVICORN_PORT=5200 | loopback 8000
uvicorn.run | port='5123' | | loopback 5123
uvicorn.run | host='', port=5123 | | any 5123
uvicorn.run | host=None, port=5123 | | any 5123
aiohttp | | | any 8080
aiohttp | port='5123' | | any 5123
aiohttp | host='localhost' | | loopback 8080
bottle | | | loopback 8080
bottle | port='5123' | | loopback 5123
bottle | host='', port=5123 | | any 5123
tornado | 5123 | | any 5123
tornado | '5123' | | any 5123
tornado | 5123, 'localhost' | | loopback 5123
tornado | 5123, address='' | | any 5123
flask | | | loopback 5000
flask | | PORT=5123 FLASK_RUN_PORT=5200 | loopback 5000
flask | port='5123' | | loopback 5123
flask | port=0 | | loopback 0
flask | port=None | | loopback 5000
flask | host='' | | loopback 5000
flask | host='::' | | any 5000
start_server | None, 5123 | | any 5123
start_server | '', 5123 | | any 5123
start_server | 'localhost', 5123 | | loopback 5123
start_server | '0.0.0.0', '5123' | | any 5123
start_server | '127.0.0.1', None | | loopback 0
node | | | any 0
node | undefined | | any 0
node | null | | any 0
node | '' | | exits
node | '5123' | | any 5123
node | ' 5123 ' | | any 5123
node | 'abc' | | unix:abc
node | '5123abc' | | unix:5123abc
node | NaN | | exits
node | 0 | | any 0
node | -1 | | exits
node | 70000 | | exits
node | 5123, '' | | any 5123
node | 5123, undefined | | any 5123
node | 5123, 'localhost' | | loopback 5123
node | 5123, '::' | | any 5123
node | { port: undefined } | | any 0
node | { port: '' } | | exits
node | { port: 'abc' } | | exits
node | { port: 5123, host: '' } | | any 5123
node | { port: 5123, hostname: '127.0.0.1' } | | any 5123
node | true | | exits
node | '0.0.0.0:5123' | | unix:0.0.0.0:5123
node | 5123.5 | | exits
node | () => {} | | any 0
express | | | any 0
express | 'abc' | | unix:abc
express | undefined, '127.0.0.1' | | loopback 0
express | '0x1403' | | any 5123
express | process.env.PORT \|\| 3000 | PORT=abc | unix:abc
koa | | | any 0
koa | '5123', '127.0.0.1' | | loopback 5123
fastify | { port: undefined } | | loopback 0
fastify | { port: '' } | | exits
fastify | { port: 'abc' } | | exits
fastify | { port: NaN } | | exits
fastify | { port: '5123' } | | loopback 5123
fastify | { port: 5123, host: undefined } | | loopback 5123
fastify | { port: 5123, host: '' } | | any 5123
fastify | { port: 5123, host: '0.0.0.0' } | | any 5123
hono | | | any 3000
hono | | PORT=5123 | any 3000
hono | port: undefined | | any 3000
hono | port: NaN | | exits
hono | port: '' | | exits
hono | port: 0 | | any 0
hono | port: '5123' | | any 5123
hono | port: 5123, hostname: 'localhost' | | loopback 5123
socket.io | 5123 | | any 5123
socket.io | '5123' | | any 5123
`

func say(o fact.Outcome) string {
	switch {
	case o.Outcome != "listens":
		return o.Outcome
	case strings.HasPrefix(o.Interface, "unix:"):
		return o.Interface
	}
	return fmt.Sprintf("%s %d", o.Interface, o.Port)
}

func TestServersDoWhatWasMeasured(t *testing.T) {
	t.Parallel()
	rows := 0
	for line := range strings.Lines(measured) {
		line = strings.TrimSpace(strings.ReplaceAll(line, `\|`, "\x00"))
		if line == "" {
			continue
		}
		part := strings.Split(line, "|")
		for i := range part {
			part[i] = strings.ReplaceAll(strings.TrimSpace(part[i]), "\x00", "|")
		}
		rows++
		tpl, ok := templates[part[0]]
		if !ok {
			t.Fatalf("no program starts %s", part[0])
		}
		t.Run(line, func(t *testing.T) {
			t.Parallel()
			files := strings.ReplaceAll(tpl.files, "FILL", part[1])
			manifest := "-- requirements.txt --\nflask==3\n"
			if strings.HasPrefix(tpl.start, "node") {
				manifest = "-- package.json --\n{\"name\": \"s\", \"dependencies\": {\"express\": \"5\"}}\n"
			}
			with := map[string]string{}
			for _, f := range strings.Fields(part[2]) {
				k, v, _ := strings.Cut(f, "=")
				with[k] = v
			}
			r := run(t, plant(t, manifest+"-- Procfile --\nweb: "+strings.ReplaceAll(tpl.start, "FILL", part[1])+"\n"+files), with)
			var got []string
			for _, s := range r.Components[0].Starts {
				for _, l := range s.Listeners {
					if l.View.Under != nil && s.Source == "process file" {
						got = append(got, say(*l.View.Under))
					}
				}
			}
			if len(got) != 1 || got[0] != part[3] {
				t.Errorf("it %v, and was measured to be %s", got, part[3])
			}
		})
	}
	if rows < 140 {
		t.Errorf("only %d rows", rows)
	}
}

func TestListenersOfTheReport(t *testing.T) {
	t.Parallel()
	r := run(t, plant(t, nodeManifest+`
-- server.js --
const app = require("express")();
const config = require("./config");
app.listen(config.port, config.host);
-- config.js --
exports.port = process.env.PORT || 3000;
exports.host = process.env.HOST || "127.0.0.1";
`), map[string]string{"PORT": "5123", "HOST": "0.0.0.0"})
	l := r.Components[0].Starts[0].Listeners[0]
	if l.View.PortKind != "variable" || l.View.Variable != "PORT" || l.View.Fallback != "3000" || l.View.Interface != "loopback" || l.Via != "code" || l.At.Line != 3 {
		t.Errorf("the listener is seen as %+v at %s", l.View, l.At)
	}
	if got := say(*l.View.Under); got != "any 5123" {
		t.Errorf("under the environment it is %s", got)
	}
}

func TestWhatCannotBeToldIsSaid(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, reason string }{
		"a port that is fetched": {nodeManifest + `
-- server.js --
const { lookUp } = require("./registry");
lookUp().then((port) => require("express")().listen(port));
-- registry.js --
exports.lookUp = async () => (await fetch("http://registry.hill.example/port")).json();
`, "port"},
		"a command from a variable":   {flaskManifest + flaskApp + "-- Procfile --\nweb: $START\n", "$START"},
		"a program that nobody knows": {flaskManifest + flaskApp + "-- Procfile --\nweb: skyserver --fast\n", "skyserver"},
		"several programs":            {nodeManifest + server + "-- Procfile --\nweb: npx concurrently 'npm:web-*'\n", "several"},
	} {
		t.Run(name, func(t *testing.T) {
			r := run(t, plant(t, c.tree), nil)
			found := false
			for _, u := range r.Unknown {
				found = found || strings.Contains(u.Reason, c.reason)
			}
			if !found {
				t.Errorf("nothing is said of %q: %v", c.reason, r.Unknown)
			}
			for _, v := range r.Verdicts {
				if v.Host == "pushed" && v.Verdict == "ready" {
					t.Error("a component that cannot be told about is called ready")
				}
			}
		})
	}
}

func TestWhatAnImageSetsIsAFallback(t *testing.T) {
	t.Parallel()
	tree := flaskManifest + flaskApp + `
-- Dockerfile --
FROM python:3.13-slim
ENV PORT=8080 HOST=0.0.0.0
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8080
CMD exec gunicorn --bind $HOST:$PORT app:app
`
	for with, want := range map[string]string{"": "any 8080", "PORT=5123": "any 5123", "PORT=5123 HOST=127.0.0.1": "loopback 5123"} {
		env := map[string]string{}
		for _, f := range strings.Fields(with) {
			k, v, _ := strings.Cut(f, "=")
			env[k] = v
		}
		r := run(t, plant(t, tree), env)
		for _, s := range r.Components[0].Starts {
			if s.Source == "container" && say(*s.Listeners[0].View.Under) != want {
				t.Errorf("under %q the container is %s, not %s", with, say(*s.Listeners[0].View.Under), want)
			}
		}
	}
}

func TestWhatTheCommandSetsCounts(t *testing.T) {
	t.Parallel()
	r := run(t, plant(t, nodeManifest+"-- Procfile --\nweb: PORT=4000 node server.js\n"+server), map[string]string{"PORT": "5123"})
	if got := say(*r.Components[0].Starts[0].Listeners[0].View.Under); got != "any 4000" {
		t.Errorf("the command sets the port itself, and it %s", got)
	}
	r = run(t, plant(t, flaskManifest+flaskApp+"-- Procfile --\nweb: FLASK_RUN_PORT=$PORT FLASK_RUN_HOST=0.0.0.0 flask run\n"), map[string]string{"PORT": "5123"})
	if got := say(*r.Components[0].Starts[0].Listeners[0].View.Under); got != "any 5123" {
		t.Errorf("the server's own variable is set from another, and it %s", got)
	}
}
