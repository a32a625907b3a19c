package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"ubique/core/fact"
)

// component surveys a tree that holds one component.
func component(t *testing.T, tree string) *fact.Component {
	t.Helper()
	r := run(t, plant(t, tree), nil)
	if len(r.Components) != 1 {
		t.Fatalf("there are %d components", len(r.Components))
	}
	return r.Components[0]
}

func TestPinsAreReadFromEverySource(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, want string }{
		"Node.js": {`
-- package.json --
{
  "name": "x",
  "engines": { "node": ">=20 <25" },
  "volta": { "node": "24.1.0" },
  "devEngines": { "runtime": { "name": "node", "version": "^24" } },
  "scripts": { "start": "node s.js" }
}
-- s.js --
-- .nvmrc --
# the version of the hill
v24.2
-- .node-version --
24
-- .tool-versions --
python 3.13.0
nodejs 24.3.0
-- Dockerfile --
ARG NODE=24.4
FROM node:${NODE}-alpine3.22 AS build
FROM node:${NODE}-slim
CMD ["node", "s.js"]
`, "engines >=20 <25 package.json:3:25 >=20 <25|volta 24.1.0 package.json:4:23 24.1.0|devEngines ^24 package.json:5:60 24.x|.nvmrc v24.2 .nvmrc:2:1 24.2.x|.node-version 24 .node-version:1:1 24.x|.tool-versions 24.3.0 .tool-versions:2:8 24.3.0|container base 24.4-slim Dockerfile:3:6 24.4.x"},
		"Python": {`
-- pyproject.toml --
[project]
name = "x"
requires-python = ">=3.12"
[tool.poetry.dependencies]
python = "^3.12"
-- Pipfile --
[requires]
python_version = "3.13"
-- .python-version --
3.13.2
-- runtime.txt --
python-3.13.1
-- .tool-versions --
python 3.13.0 system
-- Procfile --
web: python -m http.server $PORT
-- Dockerfile --
FROM docker.io/library/python:3.13-slim-bookworm
CMD python -m http.server
`, "requires-python >=3.12 pyproject.toml:3:20 >=3.12|poetry python ^3.12 pyproject.toml:5:11 >=3.12 <4|Pipfile 3.13 Pipfile:2:19 3.13.x|.python-version 3.13.2 .python-version:1:1 3.13.2|runtime.txt python-3.13.1 runtime.txt:1:1 3.13.1|.tool-versions 3.13.0 .tool-versions:1:8 3.13.0|container base 3.13-slim-bookworm Dockerfile:1:6 3.13.x"},
		"aliases": {`
-- package.json --
{ "name": "x", "engines": { "node": "*" }, "scripts": { "start": "node s.js" } }
-- .nvmrc --
lts/jod
-- .node-version --
lts/*
-- s.js --
`, "engines * package.json:1:38 alias|.nvmrc lts/jod .nvmrc:1:1 22.x|.node-version lts/* .node-version:1:1 not understood"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, p := range component(t, c.tree).Pins {
				means := "not understood"
				if p.Known {
					means = p.Set.String()
				} else if p.Alias {
					means = "alias"
				}
				got = append(got, fmt.Sprintf("%s %s %s %s", p.From, p.Text, p.At, means))
			}
			if s := strings.Join(got, "|"); s != c.want {
				t.Errorf(`the pins are
%s
not
%s`, strings.ReplaceAll(s, "|", "\n"), strings.ReplaceAll(c.want, "|", "\n"))
			}
		})
	}
}

func TestDependenciesAreReadFromEveryManifest(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, want string }{
		"package.json": {`
-- package.json --
{
  "name": "x",
  "scripts": { "start": "node s.js" },
  "dependencies": { "express": "^5.1.0", "@dome/tools": "workspace:*", "any": "*" },
  "devDependencies": { "mocha": "11" },
  "optionalDependencies": { "fast": "1.2.3" },
  "peerDependencies": { "peer": ">=1" }
}
-- s.js --
`, "express ^5.1.0 pinned|@dome/tools workspace:* pinned|any *|mocha 11 dev pinned|fast 1.2.3 optional pinned|peer >=1 optional"},
		"requirements": {`
-- requirements.txt --
# comment
-r more/base.txt
-c constraints.txt
--extra-index-url https://index.hill.example/simple
Flask[async]==3.1.2 ; python_version >= "3.9"  # why
gunicorn>=23,<24
SQLAlchemy ~= 2.0
bare_name
pkg @ https://files.hill.example/pkg-1.0.tar.gz
-e git+https://git.hill.example/sky.git#egg=sky
-- more/base.txt --
Django == 5.2.8
-- constraints.txt --
flask==9
-- requirements-dev.txt --
pytest
-- Procfile --
web: gunicorn app:app
`, "django == 5.2.8 pinned|flask ==3.1.2 pinned|flask[async] ==3.1.2 optional pinned|gunicorn >=23,<24 pinned|sqlalchemy ~= 2.0 pinned|bare-name |pkg @ https://files.hill.example/pkg-1.0.tar.gz pinned|sky @ source pinned|pytest  dev"},
		"pyproject": {`
-- pyproject.toml --
[project]
name = "x"
dependencies = [
  "fastapi[standard]>=0.121,<1",
  "httpx",
]
[project.optional-dependencies]
charts = ["matplotlib==3.10.7"]
[dependency-groups]
dev = ["pytest>=8"]
[tool.uv]
dev-dependencies = ["ruff"]
-- Procfile --
web: uvicorn app:app
`, "fastapi >=0.121,<1 pinned|fastapi[standard] >=0.121,<1 optional pinned|httpx |matplotlib ==3.10.7 dev pinned|pytest >=8 dev|ruff  dev"},
		"Poetry": {`
-- pyproject.toml --
[tool.poetry.dependencies]
python = "^3.13"
flask = "^3.1"
uvicorn = {version = "^0.38", extras = ["standard"]}
local = {path = "../local"}
anything = "*"
[tool.poetry.group.test.dependencies]
pytest = "^8"
[tool.poetry.group.web.dependencies]
gunicorn = "^23"
-- Procfile --
web: gunicorn app:app
`, "flask ^3.1 pinned|uvicorn[standard]  optional pinned|uvicorn ^0.38 pinned|local @ source pinned|anything *|pytest ^8 dev pinned|gunicorn ^23 pinned"},
		"Pipfile": {`
-- Pipfile --
[packages]
flask = "==3.1.2"
gunicorn = {version = "~=23.0"}
any = "*"
[dev-packages]
pytest = "*"
-- Procfile --
web: gunicorn app:app
`, "flask ==3.1.2 pinned|gunicorn ~=23.0 pinned|any *|pytest * dev"},
		"setup files": {`
-- setup.cfg --
[metadata]
name = x
[options]
install_requires =
    flask==3.1.2
    gunicorn
-- setup.py --
from setuptools import setup
setup(install_requires=["requests>=2,<3"])
-- Procfile --
web: gunicorn app:app
`, "flask ==3.1.2 pinned|gunicorn |requests >=2,<3 pinned"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, d := range component(t, c.tree).Dependencies {
				s := d.Name + " " + d.Spec
				if d.Dev {
					s += " dev"
				}
				if d.Optional {
					s += " optional"
				}
				if d.Pinned {
					s += " pinned"
				}
				if d.At.Line == 0 || d.File == "" {
					s += " NOWHERE"
				}
				got = append(got, s)
			}
			if s := strings.Join(got, "|"); s != c.want {
				t.Errorf(`the dependencies are
%s
not
%s`, strings.ReplaceAll(s, "|", "\n"), strings.ReplaceAll(c.want, "|", "\n"))
			}
		})
	}
}

func TestManifestsAndLocks(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, want string }{
		"npm":            {nodeManifest + server + "-- package-lock.json --\n{}\n", "package.json npm package-lock.json"},
		"pnpm":           {nodeManifest + server + "-- pnpm-lock.yaml --\nlockfileVersion: '9.0'\n", "package.json pnpm pnpm-lock.yaml"},
		"yarn":           {nodeManifest + server + "-- yarn.lock --\n", "package.json yarn yarn.lock"},
		"without a lock": {nodeManifest + server, "package.json npm "},
		"exact versions": {flaskManifest + flaskApp, "requirements.txt pip requirements.txt"},
		"Poetry": {`-- pyproject.toml --
[tool.poetry.dependencies]
flask = "3.1.2"
-- poetry.lock --
[[package]]
name = "flask"
` + flaskApp, "pyproject.toml poetry poetry.lock"},
		"uv": {`-- pyproject.toml --
[project]
name = "x"
dependencies = ["flask"]
-- uv.lock --
version = 1
` + flaskApp, "pyproject.toml uv uv.lock"},
		"Pipenv": {`-- Pipfile --
[packages]
flask = "*"
-- Pipfile.lock --
{"default": {"flask": {}}}
` + flaskApp, "Pipfile pipenv Pipfile.lock"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, m := range component(t, strings.ReplaceAll(c.tree, "\n\n--", "\n--")).Manifests {
				got = append(got, m.File+" "+m.Manager+" "+m.Lock)
			}
			if s := strings.Join(got, "|"); s != c.want {
				t.Errorf("the manifests are %q, not %q", s, c.want)
			}
		})
	}
}

func TestFrameworks(t *testing.T) {
	t.Parallel()
	for pkg, want := range map[string]string{"express": "Express", "fastify": "Fastify", "koa": "Koa", "hono": "Hono", "@nestjs/core": "Nest", "left": ""} {
		c := component(t, fmt.Sprintf(`-- package.json --
{ "name": "x", "scripts": { "start": "node s.js" }, "dependencies": { %q: "1" } }
-- s.js --
`, pkg))
		if got := strings.Join(c.Frameworks, " "); got != want {
			t.Errorf("%s is the framework %q, not %q", pkg, got, want)
		}
	}
	for pkg, want := range map[string]string{"Flask": "Flask", "Django": "Django", "fastapi": "FastAPI", "starlette": "Starlette", "requests": ""} {
		c := component(t, fmt.Sprintf(`-- requirements.txt --
%s==1
-- Procfile --
web: python app.py
-- app.py --
`, pkg))
		if got := strings.Join(c.Frameworks, " "); got != want {
			t.Errorf("%s is the framework %q, not %q", pkg, got, want)
		}
	}
	if c := component(t, `-- app.py --
from flask import Flask
app = Flask(__name__)
`); !slices.Contains(c.Frameworks, "Flask") {
		t.Error("code without a manifest does not say what it is made with")
	}
}

func TestPlainApplicationsAreComponents(t *testing.T) {
	t.Parallel()
	for name, tree := range map[string]string{
		"a WSGI callable": `-- requirements.txt --
gunicorn==23.0.0
-- web.py --
def application(environ, start_response):
    start_response("200 OK", [])
    return [b"clear"]
`,
		"an ASGI callable": `-- requirements.txt --
uvicorn==0.38.0
-- web.py --
async def app(scope, receive, send):
    ...
`,
		"a socket server": `-- main.py --
import socketserver
socketserver.TCPServer(("", 8000), None).serve_forever()
`,
		"a plain http server": "-- server.js --\nrequire('http').createServer().listen(8000)\n",
		"only a process file": `-- Procfile --
web: node tool.js
-- package.json --
{ "name": "x" }
-- tool.js --
`,
		"a container of Node.js": `-- Dockerfile --
FROM node:24
CMD ["node", "x.js"]
-- package.json --
{ "name": "x" }
-- x.js --
`,
	} {
		t.Run(name, func(t *testing.T) { component(t, tree) })
	}
}

func TestStartsOfTheReport(t *testing.T) {
	t.Parallel()
	c := component(t, nodeManifest+server+`
-- Procfile --
web: npm start
worker: node worker.js
-- worker.js --
-- start.sh exec --
#!/bin/sh
exec node server.js
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
RUN npm ci
ENTRYPOINT ["docker-entrypoint.sh"]
CMD ["node", "server.js"]
`)
	var got []string
	for _, s := range c.Starts {
		target := "-"
		if s.Target != nil {
			target = s.Target.File
		}
		got = append(got, fmt.Sprintf("%s|%s|%s|%s|%s", s.Process, s.Source, s.Command, s.Final.Program, target))
	}
	want := []string{
		"web|process file|npm start|node|server.js",
		"worker|process file|node worker.js|node|worker.js",
		"web|package script|node server.js|node|server.js",
		"web|container|docker-entrypoint.sh node server.js|node|server.js",
		"web|start script|sh start.sh|node|server.js",
	}
	if !slices.Equal(got, want) {
		t.Errorf(`the starts are
%s
not
%s`, strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
}

func TestVariablesOfTheReport(t *testing.T) {
	t.Parallel()
	show := func(c *fact.Component) string {
		var got []string
		for _, v := range c.Variables {
			s := v.Name
			if v.HasFall {
				s += "=" + v.Fallback
			}
			if v.Required {
				s += "!"
			}
			got = append(got, fmt.Sprintf("%s@%d", s, v.At.Line))
		}
		return strings.Join(got, " ")
	}
	c := component(t, nodeManifest+`
-- server.js --
const { SITE = "hill", SEATS: seats } = process.env;
const key = process.env["API_KEY"] ?? "abc-123";
const limit = Number(process.env.LIMIT || 10);
if (process.env.TRACE) { console.log("tracing") }
const url = process.env.SKY_URL;
require("express")().listen(process.env.PORT || 3000, () => console.log(SITE, seats, key, limit, url));
`)
	if got, want := show(c), "API_KEY=(not shown)@2 LIMIT=10@3 PORT=3000@6 SEATS@1 SITE=hill@1 SKY_URL@5 TRACE@4"; got != want {
		t.Errorf(`the variables are
%s
not
%s`, got, want)
	}
	c = component(t, flaskManifest+`
-- Procfile --
web: gunicorn app:app
-- app.py --
import os
from os import environ
from flask import Flask
app = Flask(__name__)
app.config["SITE"] = os.environ["SITE"]
LIMIT = int(environ.get("LIMIT", "10"))
DEBUG = os.getenv("DEBUG") == "1"
SKY = os.environ.get("SKY") or "clear"
`)
	if got, want := show(c), "DEBUG@7 LIMIT=10@6 SITE!@5 SKY=clear@8"; got != want {
		t.Errorf(`the variables are
%s
not
%s`, got, want)
	}
}

func TestFingerprintsStayWhenLinesMove(t *testing.T) {
	t.Parallel()
	const tail = "app.listen(process.env.port || 3000);\n"
	a := finding(t, run(t, plant(t, nodeManifest+"-- server.js --\nconst app = require(\"express\")();\n"+tail), nil), "port/name-case")
	b := finding(t, run(t, plant(t, nodeManifest+`-- server.js --
// a new line

const app = require("express")();
  `+tail), nil), "port/name-case")
	if a.Where.Line == b.Where.Line || a.Fingerprint != b.Fingerprint {
		t.Errorf("line %d has %s, line %d has %s", a.Where.Line, a.Fingerprint, b.Where.Line, b.Fingerprint)
	}
	c := finding(t, run(t, plant(t, nodeManifest+`-- server.js --
const app = require("express")();
app.listen(process.env.port || 4000);
`), nil), "port/name-case")
	if c.Fingerprint == a.Fingerprint {
		t.Error("another line has the same fingerprint")
	}
}
