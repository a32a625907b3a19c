package check_test

import "testing"

func TestPortType(t *testing.T) {
	t.Parallel()
	py := func(code string) string {
		return `-- requirements.txt --
-- .python-version --
3.13
-- s.py --
import os
from http.server import BaseHTTPRequestHandler, HTTPServer
` + code + "-- Procfile --\nweb: python s.py\n"
	}
	js := func(code string) string { return nodeManifest + "-- server.js --\n" + code }
	golang := func(addr string) string {
		return `-- go.mod --
module gate

go 1.25
-- main.go --
package main

import "net/http"
import "os"

func main() {
	http.ListenAndServe(` + addr + ", nil)\n}\n"
	}
	runCases(t, []ruleCase{
		{"text where a number is needed", py("HTTPServer((\"\", os.environ.get(\"PORT\", \"8000\")), BaseHTTPRequestHandler).serve_forever()\n"), []string{"port/type s.py:3 pushed=blocker"}},
		{"twin: a number is made of it", py("HTTPServer((\"\", int(os.environ.get(\"PORT\", \"8000\"))), BaseHTTPRequestHandler).serve_forever()\n"), nil},
		{"an address in the place of a port", js("const http = require(\"http\");\nhttp.createServer().listen(\"0.0.0.0:\" + (process.env.PORT || 3000));\n"), []string{"port/type server.js:2 pushed=blocker"}},
		{"no number at all", js("const port = Number(\"port \" + process.env.PORT);\nrequire(\"http\").createServer().listen(port);\n"), []string{"port/type server.js:1 pushed=blocker"}},
		{"twin: text that the server takes", js("require(\"http\").createServer().listen(process.env.PORT || \"3000\");\n"), nil},
		{"twin: a socket that is meant", js("require(\"http\").createServer().listen(process.env.PORT || \"/run/gate.sock\");\n"), nil},
		{"a port without a colon", golang("os.Getenv(\"PORT\")"), []string{"port/type main.go:7 pushed=blocker"}},
		{"twin: with one", golang("\":\" + os.Getenv(\"PORT\")"), []string{"port/no-fallback main.go:7 pushed=advice"}},
	})
}

func TestPortPrivileged(t *testing.T) {
	t.Parallel()
	tree := func(more string) string {
		return nodeManifest + `-- server.js --
require("express")().listen(process.env.PORT || 80);
-- Procfile --
web: node server.js
-- .dockerignore --
node_modules
-- Dockerfile --
FROM node:24-slim
WORKDIR /srv
COPY . .
RUN npm install --omit=dev
` + more + "CMD [\"node\", \"server.js\"]\n"
	}
	runCases(t, []ruleCase{
		{"not as root", tree("USER node\nEXPOSE 80\n"), []string{"port/privileged server.js:1 image=blocker"}},
		{"twin: as root", tree("EXPOSE 80\n"), nil},
		{"twin: a high port", tree(`USER node
ENV PORT=8080
EXPOSE 8080
`), nil},
		{"twin: the program has the right", tree(`RUN setcap cap_net_bind_service=+ep /usr/local/bin/node
USER node
EXPOSE 80
`), nil},
	})
}

func TestPortSeveral(t *testing.T) {
	t.Parallel()
	js := func(code string) string {
		return nodeManifest + `-- server.js --
const express = require("express");
const app = express();
const metrics = express();
` + code
	}
	runCases(t, []ruleCase{
		{"one port more", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(9100);\n"), []string{"port/several server.js:5 pushed=risk"}},
		{"the same port twice", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(process.env.PORT || 3000);\n"), []string{"port/several server.js:5 pushed=blocker"}},
		{"two binds", flaskManifest + flaskApp + "-- Procfile --\nweb: gunicorn -b 0.0.0.0:$PORT -b 0.0.0.0:9100 app:app\n", []string{"port/several Procfile:1 pushed=risk"}},
		{"twin: the second on loopback", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(9100, \"127.0.0.1\");\n"), nil},
		{"twin: one or the other", js("if (process.env.METRICS) metrics.listen(9100);\nelse app.listen(process.env.PORT || 3000);\n"), nil},
		{"twin: another where the first fails", js(`try {
  app.listen(process.env.PORT || 3000);
} catch {
  app.listen(process.env.PORT || 3000);
}
`), nil},
	})
}

func TestPortNone(t *testing.T) {
	t.Parallel()
	py := func(files, web string) string {
		return `-- requirements.txt --
flask==3.1.2
requests==2.32.5
celery==5.5.3
-- .python-version --
3.13
` + files + "-- Procfile --\nweb: " + web + "\n"
	}
	runCases(t, []ruleCase{
		{"a worker as the web process", py(`-- worker.py --
import time
import requests

while True:
    requests.get("https://sky.example/")
    time.sleep(60)
`, "python worker.py"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"a program that only works", py(`-- jobs.py --
from celery import Celery

app = Celery("jobs")
`, "celery -A jobs worker"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"an application that nothing starts", py(`-- app.py --
from flask import Flask

app = Flask(__name__)
`, "python app.py"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"an application of Node.js that nothing starts", nodeManifest + `-- server.js --
const app = require("express")();
module.exports = app;
`, []string{"port/none package.json:4 pushed=blocker"}},
		{"twin: something may listen in what cannot be followed", nodeManifest + `-- server.js --
const { start } = require("./boot")();
start();
-- boot.js --
module.exports = () => require(process.env.BOOT);
`, nil},
		{"twin: another program is started", py(`-- run.py --
import subprocess

subprocess.run(["gunicorn", "app:app"])
`, "python run.py"), nil},
	})
}

func TestEnvironment(t *testing.T) {
	t.Parallel()
	js := func(code, more string) string {
		return nodeManifest + "-- server.js --\nconst app = require(\"express\")();\n" + code + "app.listen(process.env.PORT || 3000);\n" + more
	}
	const example = "-- .env.example --\n"
	runCases(t, []ruleCase{
		{"undeclared", js("const key = process.env.SKY_KEY;\napp.use(key);\n", ""), []string{"env/undeclared server.js:2 pushed=advice"}},
		{"undeclared, and it must be there", flaskManifest + `-- app.py --
import os
from flask import Flask
app = Flask(__name__)
app.config["SKY"] = os.environ["SKY_KEY"]
-- Procfile --
web: gunicorn app:app
`, []string{"env/undeclared app.py:4 pushed=risk"}},
		{"one of several that are there", js("const key = [process.env.SKY_KEY, process.env.SKY_OLD_KEY].find(Boolean) ?? \"\";\napp.use(key);\n", ""), nil},
		{"undeclared, and the program asks for it", js("if (!process.env.SKY_KEY) throw new Error(\"no key\");\n", ""), []string{"env/undeclared server.js:2 pushed=risk"}},
		{"a name one slip apart", js("const url = process.env.DATABASE_URL;\napp.use(url);\n", example+"# where the bookings are\nDATABSE_URL=\n"), []string{"env/near-miss .env.example:2 pushed=risk"}},
		{"a name in another letter case", js("app.use(process.env.skyKey);\n", example+"SKYKEY=\n"), []string{"env/near-miss .env.example:1 pushed=risk"}},
		{"nothing reads it", js("", example+"OLD_SKY_KEY=\nPORT=3000\n"), []string{"env/unused .env.example:1 pushed=advice"}},
		{"names that are none", js("app.use(process.env.SKY_KEY);\n", example+`SKY_KEY=
SKY-SITE=
2ND_DOME=
`), []string{"env/invalid-name .env.example:2 pushed=risk", "env/invalid-name .env.example:3 pushed=risk"}},
		{"what the host sets", flaskManifest + flaskApp + "-- Procfile --\nweb: PORT=5000 gunicorn app:app\n", []string{"port/literal Procfile:1 pushed=blocker", "env/reserved Procfile:1 pushed=risk"}},
		{"twin: env declared in an example", js("app.use(process.env.SKY_KEY);\n", example+"export SKY_KEY=\n"), nil},
		{"twin: env declared in a descriptor", js("app.use(process.env.SKY_KEY);\n", `-- compose.yaml --
services:
  web:
    environment:
      SKY_KEY: x
`), nil},
		{"twin: a fallback, a question, a comparison", js(`const a = process.env.A_KEY || "x";
if (process.env.B_KEY) app.use(a);
const c = process.env.C_KEY === "yes";
let d = process.env.D_KEY;
if (!d) d = "x";
app.use(c, d);
`, ""), nil},
		{"twin: the platform sets it", js("app.use(process.env.HOME, process.env.NODE_ENV, process.env.npm_package_version);\n", ""), nil},
		{"twin: only where it does not run", js("if (process.env.NODE_ENV === \"test\") app.use(process.env.FAKE_SKY);\n", example+`OTHER=
-- other.js --
process.env.OTHER;
`), nil},
		{"twin: a script reads it", js("", example+`BACKUP_SITE=
-- bin/backup.sh --
rsync . "$BACKUP_SITE"
`), nil},
		{"twin: two that are alike", js("app.use(process.env.DOME_1, process.env.DOME_2);\n", example+"DOME_1=\nDOME_2=\n"), nil},
		{"twin: the host's own is kept", flaskManifest + flaskApp + "-- Procfile --\nweb: PORT=${PORT:-5000} gunicorn app:app\n", nil},
	})
}
