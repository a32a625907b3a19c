package check_test

import (
	"strings"
	"testing"
)

func TestPinMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"Node.js", `
-- package.json --
{ "name": "bookings", "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
` + server, []string{"pin/missing package.json:1 pushed=risk"}},
		{"twin: a version file of a folder above", `
-- .nvmrc --
v24
-- services/bookings/package.json --
{ "name": "bookings", "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- services/bookings/server.js --
require("express")().listen(process.env.PORT || 3000);
`, nil},
		{"Python", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"pin/missing requirements.txt:1 pushed=risk"}},
		{"twin: a table of tools", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .tool-versions --
nodejs 24.11.0
python 3.13.5
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"twin: Poetry's own", `
-- pyproject.toml --
[tool.poetry]
name = "ticker"
[tool.poetry.dependencies]
python = "^3.12"
flask = "3.1.2"
gunicorn = "23.0.0"
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
	})
}

func TestPinDisagree(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a version file against engines", `
-- package.json --
{ "name": "bookings", "engines": { "node": ">=22 <27" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
v20.11.0
` + server, []string{"pin/disagree .nvmrc:1 pushed=risk", "pin/end-of-life .nvmrc:1 pushed=risk"}},
		{"twin: they have versions in common", `
-- package.json --
{ "name": "bookings", "engines": { "node": "^22.9 || >=24" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
v22.11.0
-- .node-version --
22
` + server, nil},
		{"the odd one of three", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "26.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" }
}
-- .nvmrc --
22
-- .tool-versions --
nodejs 22.11.0
` + server, []string{"pin/disagree package.json:3 pushed=risk"}},
		{"a container older than the code", `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = ">=3.12"
dependencies = ["flask==3.1.2", "gunicorn==23.0.0"]
-- Procfile --
web: gunicorn app:app
-- Dockerfile --
FROM python:3.11-slim-bookworm
WORKDIR /srv
COPY . .
RUN pip install .
EXPOSE 8000
CMD ["gunicorn", "-b", "0.0.0.0:8000", "app:app"]
` + flaskApp, []string{"pin/disagree Dockerfile:1 pushed=risk image=blocker"}},
		{"twin: the base through an argument", `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = ">=3.12"
dependencies = ["flask==3.1.2", "gunicorn==23.0.0"]
-- Procfile --
web: gunicorn app:app
-- Dockerfile --
ARG PYTHON=3.13
FROM python:${PYTHON}-slim
WORKDIR /srv
COPY . .
RUN pip install .
EXPOSE 8000
CMD ["gunicorn", "-b", "0.0.0.0:8000", "app:app"]
` + flaskApp, nil},
		{"a lower bound that excludes the file", `
-- Pipfile --
[packages]
flask = "==3.1.2"
gunicorn = "==23.0.0"
[requires]
python_version = "3.12"
-- runtime.txt --
python-3.11.9
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"pin/disagree runtime.txt:1 pushed=risk"}},
		{"twin: an alias is no number", `
-- package.json --
{ "name": "bookings", "engines": { "node": ">=22 <27" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
lts/*
` + server, nil},
	})
	r := run(t, plant(t, `
-- package.json --
{ "name": "bookings", "engines": { "node": ">=22 <27" }, "scripts": { "start": "node server.js" } }
-- .nvmrc --
v20.11.0
-- server.js --
require("http").createServer().listen(process.env.PORT || 3000);
`), nil)
	f := finding(t, r, "pin/disagree")
	if !strings.Contains(f.Message, "v20.11.0") || !strings.Contains(f.Message, ">=22 <27") || len(f.Trail) != 1 || f.Trail[0].At.File != "package.json" {
		t.Errorf("the pins are not shown side by side: %s, trail %v", f.Message, f.Trail)
	}
}

func TestPinFloatingImage(t *testing.T) {
	t.Parallel()
	const rest = `
WORKDIR /app
COPY . .
RUN npm ci
EXPOSE 3000
CMD ["node", "server.js"]
`
	runCases(t, []ruleCase{
		{"no tag", nodeManifest + server + `
-- Dockerfile --
FROM node
` + rest, []string{"pin/floating-image Dockerfile:1 image=risk"}},
		{"latest", nodeManifest + server + `
-- Dockerfile --
FROM node:latest
` + rest, []string{"pin/floating-image Dockerfile:1 image=risk"}},
		{"a variant without a version", nodeManifest + server + `
-- Dockerfile --
FROM docker.io/library/node:alpine AS base
` + rest, []string{"pin/floating-image Dockerfile:1 image=risk"}},
		{"twin: a version, a digest, a stage and nothing at all", nodeManifest + server + `
-- Dockerfile --
FROM node:24-alpine3.22 AS build
FROM scratch AS assets
FROM node@sha256:0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef AS other
FROM build
` + rest, nil},
		{"the stage that runs, through an argument", nodeManifest + server + `
-- Dockerfile --
ARG TAG=lts
FROM node:24 AS build
FROM node:${TAG}
` + rest, []string{"pin/floating-image Dockerfile:3 image=risk"}},
	})
}

func TestPinMalformed(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a capital letter, where letter case counts", pythonTree + `
-- runtime.txt --
Python-3.13.2
`, []string{"pin/malformed runtime.txt:1 pushed=risk"}},
		{"a space instead of the sign", pythonTree + `
-- runtime.txt --
python 3.13.2
`, []string{"pin/malformed runtime.txt:1 pushed=risk"}},
		{"twin: just so", pythonTree + `
-- runtime.txt --
python-3.13.2
`, nil},
		{"twin: the text file of another runtime", pythonTree + `
-- .python-version --
3.13
-- runtime.txt --
ruby-3.4.1
`, nil},
		{"a range where one version is wanted", pythonTree + `
-- .python-version --
>=3.12
`, []string{"pin/malformed .python-version:1 pushed=risk"}},
		{"a wild card", pythonTree + `
-- .python-version --
3.13.x
`, []string{"pin/malformed .python-version:1 pushed=risk"}},
		{"twin: another implementation", pythonTree + `
-- .python-version --
pypy3.11-7.3.20
`, nil},
		{"the name of a release line where numbers are read", nodeTree("") + `
-- .node-version --
lts/krypton
`, []string{"pin/malformed .node-version:1 pushed=risk"}},
		{"twin: where the reader knows it", nodeTree("") + `
-- .nvmrc --
lts/krypton
`, nil},
		{"a word in engines", nodeTree(`"engines": { "node": "node 24" },`), []string{"pin/malformed package.json:4 pushed=risk"}},
		{"a manager without its version", nodeTree(`"engines": { "node": "24.x" }, "packageManager": "pnpm@10",`), []string{"pin/malformed package.json:4 pushed=risk"}},
		{"twin: a manager with version and hash", nodeTree(`"engines": { "node": "24.x" }, "packageManager": "pnpm@10.24.0+sha512.aa",`), nil},
		{"a number that YAML shortens", pythonTree + `
-- .python-version --
3.14
-- .forge/workflows/test.yml --
jobs:
  test:
    steps:
      - with:
          python-version: 3.10
`, []string{"pin/malformed .forge/workflows/test.yml:5 pushed=risk"}},
		{"twin: a matrix of texts, and the base of a job", pythonTree + `
-- .python-version --
3.14
-- .forge/workflows/test.yml --
jobs:
  test:
    strategy: { matrix: { python-version: ["3.13", "3.14", pypy3.11] } }
    image: postgres:17
    steps:
      - with:
          python-version: ${{ matrix.python-version }}
`, nil},
		{"CI runs another version", pythonTree + `
-- .python-version --
3.14
-- .forge.yml --
stages: [test]
test:
  image: python:3.12
  script: [pytest]
`, []string{"pin/disagree .forge.yml:3 pushed=risk"}},
	})
}

func TestPinLoose(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"no upper end", nodeTree(`"engines": { "node": ">=22" },`), []string{"pin/loose package.json:4 pushed=risk"}},
		{"any", nodeTree(`"engines": { "node": "*" },`), []string{"pin/loose package.json:4 pushed=risk"}},
		{"latest", nodeTree(`"engines": { "node": "latest" },`), []string{"pin/loose package.json:4 pushed=risk"}},
		{"an alias that moves", nodeTree("") + `
-- .nvmrc --
lts/*
`, []string{"pin/loose .nvmrc:1 pushed=risk"}},
		{"twin: a narrower one is read by the same hosts", nodeTree(`"engines": { "node": ">=22" },`) + `
-- .node-version --
24.11.0
`, nil},
		{"twin: what the code needs", pythonTree + `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = ">=3.12"
`, nil},
		{"any version of Python", pythonTree + `
-- Pipfile --
[packages]
flask = "==3.1.2"
[requires]
python_version = "*"
`, []string{"pin/loose Pipfile:4 pushed=risk"}},
	})
}

func TestPinEndOfLife(t *testing.T) {
	t.Parallel()
	const rest = `
WORKDIR /app
COPY . .
RUN npm ci
EXPOSE 3000
CMD ["node", "server.js"]
`
	runCases(t, []ruleCase{
		{"ended", nodeTree(`"engines": { "node": "18.x" },`), []string{"pin/end-of-life package.json:4 pushed=risk"}},
		{"the newest that all pins allow", nodeTree(`"engines": { "node": ">=16" },`) + `
-- .nvmrc --
v20.1.0
`, []string{"pin/end-of-life .nvmrc:1 pushed=risk"}},
		{"twin: the newest is supported", nodeTree(`"engines": { "node": "18 || 20 || 22" },`), nil},
		{"twin: only a lower bound", pythonTree + `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = ">=3.8"
`, nil},
		{"ended a month ago", pythonTree + `
-- .python-version --
3.10.12
`, []string{"pin/end-of-life .python-version:1 pushed=risk"}},
		{"the base of a container, and the distribution under it", nodeManifest + server + `
-- Dockerfile --
FROM node:20-buster
` + rest, []string{"pin/disagree Dockerfile:1 pushed=risk image=risk", "pin/end-of-life Dockerfile:1 image=risk", "pin/end-of-life Dockerfile:1 image=risk"}},
		{"twin: only the stage that builds is old", nodeManifest + server + `
-- Dockerfile --
FROM node:18 AS build
FROM node:24-trixie-slim
` + rest, nil},
		{"the distribution alone, soon", nodeManifest + server + `
-- Dockerfile --
FROM node:24-alpine3.21
` + rest, []string{"pin/end-of-life Dockerfile:1 image=risk"}},
	})
}

// pythonTree starts, and says nothing of a version.
const pythonTree = `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
` + flaskApp

// nodeTree is a service of Node.js with more fields in the fourth line of its
// manifest.
func nodeTree(fields string) string {
	return "\n-- package.json --\n{\n  \"name\": \"gate\",\n  \"private\": true,\n  " + fields + "\n  \"scripts\": { \"start\": \"node server.js\" },\n  \"dependencies\": { \"express\": \"5.1.0\" }\n}\n" + server
}
