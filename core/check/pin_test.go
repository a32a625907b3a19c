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
{ "name": "bookings", "engines": { "node": ">=22" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
v20.11.0
` + server, []string{"pin/disagree .nvmrc:1 pushed=risk"}},
		{"twin: they have versions in common", `
-- package.json --
{ "name": "bookings", "engines": { "node": "^20.9 || >=22" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
v20.11.0
-- .node-version --
20
` + server, nil},
		{"the odd one of three", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "18.x" },
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
{ "name": "bookings", "engines": { "node": ">=22" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- .nvmrc --
lts/*
` + server, nil},
	})
	r := run(t, plant(t, `
-- package.json --
{ "name": "bookings", "engines": { "node": ">=22" }, "scripts": { "start": "node server.js" } }
-- .nvmrc --
v20.11.0
-- server.js --
require("http").createServer().listen(process.env.PORT || 3000);
`), nil)
	f := finding(t, r, "pin/disagree")
	if !strings.Contains(f.Message, "v20.11.0") || !strings.Contains(f.Message, ">=22") || len(f.Trail) != 1 || f.Trail[0].At.File != "package.json" {
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
