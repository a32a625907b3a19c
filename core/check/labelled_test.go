package check_test

import "testing"

// Whole applications as people write them, each with the list of all that is
// wrong with it. The trees are longer than the rules' own: what matters here is
// that nothing else is found.

func TestApplicationsOfNode(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a first server, never hosted", `
-- package.json --
{
  "name": "seeing",
  "version": "1.0.0",
  "main": "app.js",
  "scripts": {
    "test": "echo \"no test yet\""
  },
  "dependencies": {
    "express": "^5.1.0"
  }
}
-- app.js --
const express = require("express");
const app = express();
const port = 3000;

app.get("/", (req, res) => {
  res.send("clear tonight");
});

app.listen(port, () => {
  console.log(` + "`listening on port ${port}`" + `);
});
`, []string{"pin/missing package.json:1 pushed=risk", "start/missing package.json:1 pushed=blocker", "port/literal app.js:3 pushed=blocker"}},
		{"the layout of a generator: bin/www", `
-- package.json --
{
  "name": "catalogue",
  "private": true,
  "engines": { "node": "24.x" },
  "scripts": { "start": "node ./bin/www" },
  "dependencies": { "cookie-parser": "~1.4.4", "debug": "~4.4.3", "express": "~5.1.0", "morgan": "~1.10.0" }
}
-- app.js --
var express = require('express');
var path = require('path');
var cookieParser = require('cookie-parser');
var logger = require('morgan');
var starsRouter = require('./routes/stars');
var app = express();
app.use(logger('dev'));
app.use(express.json());
app.use(cookieParser());
app.use(express.static(path.join(__dirname, 'public')));
app.use('/', starsRouter);
module.exports = app;
-- routes/stars.js --
var express = require('express');
var router = express.Router();
router.get('/', function (req, res, next) {
  res.json(['Vega', 'Deneb', 'Altair']);
});
module.exports = router;
-- bin/www exec --
#!/usr/bin/env node

var app = require('../app');
var debug = require('debug')('catalogue:server');
var http = require('http');

var port = asPort(process.env.PORT || '3000');
app.set('port', port);

var server = http.createServer(app);
server.listen(port);
server.on('error', onError);
server.on('listening', onListening);

function asPort(text) {
  var number = parseInt(text, 10);
  if (isNaN(number)) {
    return text;
  }
  if (number >= 0) {
    return number;
  }
  return false;
}

function onError(error) {
  if (error.syscall !== 'listen') {
    throw error;
  }
  console.error(error.code + ' on ' + port);
  process.exit(1);
}

function onListening() {
  debug('listening on ' + server.address().port);
}
`, nil},
		{"TypeScript that runs from its sources in production", `
-- package.json --
{
  "name": "bookings",
  "type": "module",
  "engines": { "node": ">=22" },
  "scripts": {
    "build": "tsc --noEmit",
    "start": "ts-node-dev src/index.ts"
  },
  "dependencies": { "fastify": "5.6.1" },
  "devDependencies": {
    "ts-node-dev": "2.0.0",
    "typescript": "5.9.3"
  }
}
-- .nvmrc --
20
-- tsconfig.json --
{ "compilerOptions": { "strict": true } }
-- src/index.ts --
import Fastify from "fastify";
import { settings } from "./settings.js";

const app = Fastify({ logger: settings.logger });
app.get("/", async () => ({ nights: [] as string[] }));
await app.listen({ port: settings.port });
-- src/settings.ts --
interface Settings {
  port: number;
  logger: boolean;
}

export const settings: Settings = {
  port: Number(process.env["Port"] ?? 3000),
  logger: process.env.NODE_ENV === "production",
};
`, []string{"pin/disagree .nvmrc:1 pushed=risk", "pin/end-of-life .nvmrc:1 pushed=risk", "manifest/dev-only package.json:11 pushed=blocker", "start/reload package.json:7 pushed=risk", "port/name-case src/settings.ts:7 pushed=blocker", "port/loopback src/index.ts:6 pushed=blocker"}},
		{"a container of a sound service, a troubled process file", nodeManifest + `
-- Procfile --
web: node dist/server.js
-- Dockerfile --
FROM node:24-slim
ENV NODE_ENV=production PORT=8080
WORKDIR /srv
COPY package.json ./
RUN npm install --omit=dev
COPY . .
USER node
EXPOSE 8080
CMD ["node", "server.js"]
-- server.js --
import express from "express";
const app = express();
app.get("/", (req, res) => res.send("clear"));
const server = app.listen(process.env.PORT || 3000);
process.on("SIGTERM", () => server.close());
`, []string{"start/target-missing Procfile:1 pushed=blocker"}},
		{"a server that only development starts by itself", nodeManifest + `
-- server.js --
const { createApp } = require("./app");
const app = createApp();
const port = process.env.PORT || 3000;
app.listen(port, "0.0.0.0", () => console.log("up"));
-- app.js --
const express = require("express");
exports.createApp = () => {
  const app = express();
  if (process.env.NODE_ENV !== "production") {
    app.use(require("morgan")("dev"));
    require("./fixtures").fill(app);
  }
  return app;
};
if (require.main === module) {
  exports.createApp().listen(4000, "127.0.0.1");
}
-- fixtures.js --
exports.fill = (app) => app;
`, nil},
		{"keys in the code", nodeManifest + `
-- server.js --
const crypto = require("node:crypto");
const app = require("express")();
const config = {
  sessionSecret: process.env.SESSION_SECRET || "winter-hexagon",
  apiKey: "k-4471-altocumulus-99",
  passwordMinLength: 12,
  secretQuestion: "What is your favourite star?",
};
app.get("/sign", (req, res) => {
  res.send(crypto.createHmac("sha256", config.apiKey).update(req.query.text).digest("hex"));
});
app.listen(process.env.PORT || 3000);
`, []string{"secret/in-source server.js:4 pushed=risk", "secret/in-source server.js:5 pushed=risk"}},
		{"Koa with a port that nobody sets", `
-- package.json --
{ "name": "sky", "engines": { "node": "24.x" }, "scripts": { "start": "node ." }, "main": "index.js", "dependencies": { "koa": "3.0.3" } }
-- index.js --
const Koa = require("koa");
const app = new Koa();
app.use(async (ctx) => { ctx.body = "clear"; });
app.listen(process.env.HTTP_PORT);
`, []string{"port/other-name index.js:4 pushed=blocker"}},
		{"Hono, two ways to start it", `
-- package.json --
{
  "name": "sky",
  "type": "module",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node src/main.js" },
  "dependencies": { "hono": "4.10.4", "@hono/node-server": "1.19.6" }
}
-- Procfile --
web: node src/index.js
-- src/index.js --
import { serve } from "@hono/node-server";
import app from "./app.js";
serve({ fetch: app.fetch, port: 8787 });
-- src/main.js --
import { serve } from "@hono/node-server";
import app from "./app.js";
serve({ fetch: app.fetch, port: Number(process.env.PORT) || 3000 });
-- src/app.js --
import { Hono } from "hono";
export default new Hono().get("/", (c) => c.text("clear"));
`, []string{"start/disagree Procfile:1 pushed=risk", "port/literal src/index.js:3 pushed=blocker"}},
	})
}

func TestApplicationsOfPython(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a Flask file with a frozen environment and no server", `
-- requirements.txt --
blinker==1.9.0
click==8.3.0
Flask==3.1.2
itsdangerous==2.2.0
Jinja2==3.1.6
MarkupSafe==3.0.3
Werkzeug==3.1.3
-- Procfile --
web: gunicorn main:app
-- runtime.txt --
python-3.13.1
-- app.py --
import os
from flask import Flask, render_template, request

app = Flask(__name__)
app.secret_key = "the-pleiades-are-seven"


@app.route("/", methods=["GET", "POST"])
def evening():
    return render_template("evening.html", name=request.form.get("name"))


if __name__ == "__main__":
    app.run(debug=True)
`, []string{"start/program-undeclared Procfile:1 pushed=blocker", "start/target-missing Procfile:1 pushed=blocker"}},
		{"the same, mended", `
-- requirements.txt --
Flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- runtime.txt --
python-3.13.1
-- app.py --
import os
from flask import Flask, render_template, request

app = Flask(__name__)
app.secret_key = os.environ["SECRET_KEY"]


@app.route("/", methods=["GET", "POST"])
def evening():
    return render_template("evening.html", name=request.form.get("name"))


if __name__ == "__main__":
    app.run(debug=True)
`, nil},
		{"FastAPI started by its own file", `
-- requirements.txt --
fastapi==0.121.0
uvicorn==0.38.0
-- .python-version --
3.13
-- Procfile --
web: python -m forecast
-- forecast/__init__.py --
-- forecast/__main__.py --
import uvicorn

from forecast.config import config

if __name__ == "__main__":
    uvicorn.run("forecast.web:app", host=config["host"], port=config["port"], reload=config["debug"])
-- forecast/config.py --
import os

config = {
    "host": os.environ.get("HOST", "127.0.0.1"),
    "port": int(os.environ.get("FORECAST_PORT", "8000")),
    "debug": bool(os.environ.get("DEBUG")),
}
-- forecast/web.py --
from fastapi import FastAPI

app = FastAPI()
`, []string{"port/other-name forecast/config.py:5 pushed=blocker", "port/loopback forecast/config.py:4 pushed=blocker"}},
		{"Django as its generator leaves it, with a process file", `
-- requirements.txt --
Django==5.2.8
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn hill.wsgi --log-file -
-- manage.py exec --
#!/usr/bin/env python
"""Runs administrative tasks."""
import os
import sys


def main():
    os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'hill.settings')
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)


if __name__ == '__main__':
    main()
-- hill/__init__.py --
-- hill/urls.py --
from django.contrib import admin
from django.urls import path

urlpatterns = [path('admin/', admin.site.urls)]
-- hill/asgi.py --
import os
from django.core.asgi import get_asgi_application
os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'hill.settings')
application = get_asgi_application()
-- hill/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault('DJANGO_SETTINGS_MODULE', 'hill.settings')
application = get_wsgi_application()
-- hill/settings.py --
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent

SECRET_KEY = 'insecure-4%q)m8k+cassiopeia-perseus&andromeda'

DEBUG = True

ALLOWED_HOSTS = []

INSTALLED_APPS = ['django.contrib.admin', 'django.contrib.auth', 'evenings.apps.EveningsConfig']
ROOT_URLCONF = 'hill.urls'
WSGI_APPLICATION = 'hill.wsgi.application'
DATABASES = {'default': {'ENGINE': 'django.db.backends.sqlite3', 'NAME': BASE_DIR / 'db.sqlite3'}}
AUTH_PASSWORD_VALIDATORS = [{'NAME': 'django.contrib.auth.password_validation.MinimumLengthValidator'}]
-- evenings/__init__.py --
-- evenings/apps.py --
from django.apps import AppConfig


class EveningsConfig(AppConfig):
    name = 'evenings'
-- evenings/models.py --
import geo_tools
from django.db import models
-- evenings/tests.py --
import pytest
`, []string{"manifest/undeclared evenings/models.py:1 pushed=blocker", "secret/in-source hill/settings.py:5 pushed=risk", "settings/debug hill/settings.py:7 pushed=risk", "settings/hosts-empty hill/settings.py:9 pushed=blocker"}},
		{"an application factory in a package below src", `
-- pyproject.toml --
[project]
name = "ticker"
version = "1.0.0"
requires-python = ">=3.13"
dependencies = ["flask>=3.1,<4", "gunicorn>=23,<24", "pydantic-settings>=2,<3"]

[build-system]
requires = ["setuptools>=75"]
build-backend = "setuptools.build_meta"

[tool.setuptools.packages.find]
where = ["src"]
-- Procfile --
web: gunicorn --chdir src "ticker.web:create_app()" --bind 0.0.0.0:$PORT
-- src/ticker/__init__.py --
-- src/ticker/settings.py --
from functools import lru_cache

from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="TICKER_", env_file=".env")

    lines: int = 20
    secret_key: str


@lru_cache
def settings() -> Settings:
    return Settings()
-- src/ticker/web.py --
from flask import Flask

from .settings import settings


def create_app() -> Flask:
    app = Flask(__name__)
    app.secret_key = settings().secret_key
    return app
`, nil},
		{"a worker beside the web, and a container of another age", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
celery==5.5.3
-- .python-version --
3.13
-- Procfile --
worker: celery -A tasks worker
web: gunicorn app:app
-- tasks.py --
from celery import Celery
app = Celery("tasks")
-- Dockerfile --
FROM python:3.9-slim
WORKDIR /srv
COPY requirements.txt .
RUN pip install -r requirements.txt
COPY . .
EXPOSE 5000
CMD ["flask", "run", "--host=0.0.0.0", "--port=5000"]
` + flaskApp, []string{"pin/disagree Dockerfile:1 pushed=risk image=risk", "pin/end-of-life Dockerfile:1 image=risk", "start/dev-server Dockerfile:7 image=risk"}},
		{"a start script with a mistake in it", flaskManifest + flaskApp + `
-- Procfile --
web: sh bin/start.sh
-- bin/start.sh --
#!/bin/sh
set -e
flask db upgrade
exec gunicorn --bind 127.0.0.1:${PORT:-8000} app:create_app
`, []string{"start/callable-missing bin/start.sh:4 pushed=blocker", "port/loopback bin/start.sh:4 pushed=blocker"}},
		{"a module that stands in src, and src is nowhere said", `
-- requirements.txt --
gunicorn==23.0.0
Flask==3.1.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- src/app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"start/target-missing Procfile:1 pushed=blocker"}},
		{"its sound twin: the command goes there", `
-- requirements.txt --
gunicorn==23.0.0
Flask==3.1.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn --chdir src app:app
-- src/app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"its sound twin: the path is said", `
-- requirements.txt --
gunicorn==23.0.0
Flask==3.1.0
-- .python-version --
3.13
-- Procfile --
web: PYTHONPATH=src gunicorn app:app
-- src/app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"a fixed port where nothing tells whether it comes to it", `
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" } }
-- server.js --
const http = require('http');
const os = require('os');
if (os.totalmem() > 1000) {
  http.createServer((q, s) => s.end()).listen(8080);
}
`, []string{"port/literal server.js:4 pushed=blocker"}},
		{"a settings object of Go that is copied does not reach the server", `
-- go.mod --
module gate

go 1.26
-- Procfile --
web: ./gate
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

type settings struct{ addr string }

func load(s settings) {
	if p := os.Getenv("PORT"); p != "" {
		s.addr = ":" + p
	}
}

func main() {
	s := settings{addr: ":8080"}
	load(s)
	log.Fatal(http.ListenAndServe(s.addr, nil))
}
`, []string{"port/literal main.go:18 pushed=blocker"}},
		{"its sound twin: by its address", `
-- go.mod --
module gate

go 1.26
-- Procfile --
web: ./gate
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

type settings struct{ addr string }

func load(s *settings) {
	if p := os.Getenv("PORT"); p != "" {
		s.addr = ":" + p
	}
}

func main() {
	s := settings{addr: ":8080"}
	load(&s)
	log.Fatal(http.ListenAndServe(s.addr, nil))
}
`, nil},
	})
}
