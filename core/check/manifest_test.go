package check_test

import "testing"

func TestManifestMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"nothing declares express", `
-- .node-version --
24
-- Procfile --
web: node server.js
` + server, []string{"manifest/missing server.js:1 pushed=blocker"}},
		{"twin: only what Node.js has", `
-- .node-version --
24
-- Procfile --
web: node server.js
-- server.js --
const http = require("node:http");
const { join } = require("path");
http.createServer((req, res) => res.end(join("a", "b"))).listen(process.env.PORT || 3000);
`, nil},
		{"nothing declares flask", `
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/missing app.py:1 pushed=blocker"}},
		{"twin: only the standard library", `
-- .python-version --
3.13
-- Procfile --
web: python app.py
-- app.py --
import os
import tomllib
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
import helpers

ThreadingHTTPServer(("", int(os.environ.get("PORT", "8000"))), BaseHTTPRequestHandler).serve_forever()
-- helpers.py --
import zoneinfo
`, nil},
	})
}

func TestManifestUndeclared(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a package that only this machine has", nodeManifest + `
-- server.js --
const express = require("express");
const helmet = require("helmet");
express().use(helmet()).listen(process.env.PORT || 3000);
`, []string{"manifest/undeclared server.js:2 pushed=blocker"}},
		{"twin: builtins, sub-paths, aliases, workspaces, types, optional ones", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "tsx src/server.ts" },
  "imports": { "#sky": "./src/sky.ts" },
  "dependencies": { "express": "5.1.0", "tsx": "4.20.6", "date-fns": "4.1.0", "@dome/tools": "1.0.0", "sky-like": "npm:express@5" },
  "devDependencies": { "@types/express": "5.0.3" }
}
-- tsconfig.json --
{ "compilerOptions": { "paths": { "~/*": ["./src/*"] } } }
-- src/server.ts --
import { readFile } from "node:fs/promises";
import fs = require("fs");
import express from "express";
import { format } from "date-fns/format";
import { tool } from "@dome/tools/lib/tool";
import type { ParamsDictionary } from "express-serve-static-core";
import { sky } from "#sky";
import { other } from "~/other";
let extra;
try { extra = require("fancy-colours"); } catch {}
if (process.env.NODE_ENV !== "production") {
  await import("swagger-viewer");
}
express().listen(process.env.PORT || 3000, () => console.log(format, tool, sky, other, extra, fs, readFile));
-- src/sky.ts --
export const sky = 1;
-- src/other.ts --
export const other = 2;
`, nil},
		{"twin: a package of the workspace", `
-- package.json --
{ "name": "hill", "private": true, "workspaces": ["services/*", "shared/*"], "engines": { "node": "24.x" } }
-- services/bookings/package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" }
}
-- services/bookings/server.js --
const { nights } = require("@hill/nights");
const app = require("express")();
app.listen(process.env.PORT || 3000, () => console.log(nights));
-- shared/nights/package.json --
{ "name": "@hill/nights", "version": "1.0.0", "main": "index.js" }
-- shared/nights/index.js --
exports.nights = 7;
`, nil},
		{"twin: members ask for each other in any version", `
-- package.json --
{ "name": "hill", "private": true, "workspaces": ["services/*", "shared/*"], "engines": { "node": "24.x" } }
-- services/bookings/package.json --
{ "name": "bookings", "scripts": { "start": "node server.js" }, "dependencies": { "@hill/nights": "*" } }
-- services/bookings/server.js --
const { nights } = require("@hill/nights");
require("http").createServer((q, r) => r.end(nights)).listen(process.env.PORT || 3000);
-- shared/nights/package.json --
{ "name": "@hill/nights", "version": "1.0.0", "main": "index.js" }
-- shared/nights/index.js --
exports.nights = "7";
`, nil},
		{"twin: the root starts a member, which declares what it needs", `
-- package.json --
{ "name": "hill", "private": true, "workspaces": ["services/*"], "engines": { "node": "24.x" }, "scripts": { "start": "yarn workspace @hill/bookings start" } }
-- services/bookings/package.json --
{ "name": "@hill/bookings", "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- services/bookings/server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, nil},
		{"the root starts a member that does not declare what it needs", `
-- package.json --
{ "name": "hill", "private": true, "workspaces": ["services/*"], "engines": { "node": "24.x" }, "scripts": { "start": "npm start -w @hill/bookings" } }
-- services/bookings/package.json --
{ "name": "@hill/bookings", "dependencies": { "express": "5.1.0" }, "scripts": { "start": "node server.js" } }
-- services/bookings/server.js --
const app = require("express")();
app.use(require("night-shield")());
app.listen(process.env.PORT || 3000);
`, []string{"manifest/undeclared services/bookings/server.js:2 pushed=blocker", "manifest/undeclared services/bookings/server.js:2 pushed=blocker"}},
		{"in Python, by the distribution's name", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
import yaml
from flask import Flask
app = Flask(__name__)
`, []string{"manifest/undeclared app.py:1 pushed=blocker"}},
		{"twin: names that differ from their distribution", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
PyYAML==6.0.3
Pillow==11.3.0
python-dotenv==1.2.1
beautifulsoup4==4.14.2
scikit-learn==1.7.2
psycopg2-binary==2.9.11
python-dateutil==2.9.0
Flask-SQLAlchemy==3.1.1
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from __future__ import annotations
import yaml
import jinja2
import sqlalchemy
import numpy
from PIL import Image
from dotenv import load_dotenv
from bs4 import BeautifulSoup
from sklearn import cluster
from dateutil import parser
import psycopg2
from flask import Flask
from flask_sqlalchemy import SQLAlchemy
from werkzeug.middleware.proxy_fix import ProxyFix
try:
    import ujson as json
except ImportError:
    import json
app = Flask(__name__)
`, []string{}},
		{"twin: imported for types and for another version only", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
import sys
from typing import TYPE_CHECKING
from flask import Flask
if TYPE_CHECKING:
    from mypy_boto3_s3 import S3Client
if sys.version_info < (3, 11):
    import tomli as tomllib
else:
    import tomllib
app = Flask(__name__)
`, nil},
		{"twin: a package that several distributions share", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
dome-clouds-storage==3.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from dome.clouds import storage
from flask import Flask
app = Flask(__name__)
`, nil},
		{"only tests import it", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- tests/test_app.py --
import pytest
from app import app
-- conftest.py --
import pytest
` + flaskApp, nil},
		{"twin: the manifest cannot be read to its end", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
git+https://git.hill.example/seeing.git
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
import seeing
from flask import Flask
app = Flask(__name__)
`, nil},
	})
}

func TestManifestDevOnly(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"the code imports it", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": {
    "morgan": "1.10.1"
  }
}
-- server.js --
const morgan = require("morgan");
require("express")().use(morgan("tiny")).listen(process.env.PORT || 3000);
`, []string{"manifest/dev-only package.json:7 pushed=blocker"}},
		{"twin: only development imports it", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "morgan": "1.10.1" }
}
-- server.js --
const app = require("express")();
if (process.env.NODE_ENV !== "production") {
  app.use(require("morgan")("tiny"));
}
app.listen(process.env.PORT || 3000);
`, nil},
		{"the start command runs it", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "tsx server.ts" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": {
    "tsx": "4.20.6"
  }
}
-- server.ts --
import express from "express";
express().listen(process.env.PORT || 3000);
`, []string{"manifest/dev-only package.json:7 pushed=blocker"}},
		{"twin: the build runs it, and development dependencies are there then", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "build": "tsc", "start": "node dist/server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "typescript": "5.9.3", "@types/express": "5.0.3" }
}
-- tsconfig.json --
{ "compilerOptions": { "outDir": "dist", "rootDir": "src" } }
-- src/server.ts --
import express, { type Request } from "express";
express().listen(process.env.PORT || 3000, (req?: Request) => {});
`, nil},
		{"a container that leaves them out", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": {
    "morgan": "1.10.1"
  }
}
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY package.json .
RUN npm install --omit=dev
COPY . .
EXPOSE 3000
CMD ["node", "server.js"]
-- server.js --
const morgan = require("morgan");
require("express")().use(morgan("tiny")).listen(process.env.PORT || 3000);
`, []string{"manifest/dev-only package.json:7 pushed=blocker image=blocker"}},
		{"a development group of pyproject", `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = ">=3.12,<3.14"
dependencies = ["flask==3.1.2"]

[dependency-groups]
dev = [
    "pytest==8.4.2",
    "gunicorn==23.0.0",
]
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/dev-only pyproject.toml:9 pushed=blocker"}},
		{"twin: declared among those that run as well", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- requirements-dev.txt --
-r requirements.txt
gunicorn==23.0.0
pytest==8.4.2
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
	})
}

func TestManifestDevOnlyInDjango(t *testing.T) {
	t.Parallel()
	site := func(debug, guard string) string {
		return djangoManifest + djangoSite("DEBUG = "+debug+`
ALLOWED_HOSTS = ["hill.example"]`) + `
-- requirements-dev.txt --
-r requirements.txt
sky-toolbar==1.0.0
-- hill/urls.py --
from django.conf import settings
from django.urls import path
urlpatterns = []
` + guard
	}
	runCases(t, []ruleCase{
		{"imported wherever the site runs", site("False", "import sky_toolbar\n"), []string{"manifest/dev-only requirements-dev.txt:2 pushed=blocker"}},
		{"twin: imported while debugging", site("False", "if settings.DEBUG:\n    import sky_toolbar\n"), nil},
		{"twin: debugging is for the environment to say", site(`os.environ.get("DEBUG") == "1"`, "if settings.DEBUG:\n    import sky_toolbar\n"), nil},
		{"imported while not debugging", site("False", "if not settings.DEBUG:\n    import sky_toolbar\n"), []string{"manifest/dev-only requirements-dev.txt:2 pushed=blocker"}},
	})
}

func TestManifestUnpinned(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a star without a lock", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": {
    "express": "*"
  }
}` + server, []string{"manifest/unpinned package.json:6 pushed=risk"}},
		{"twin: the lock says which", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "*" }
}
-- package-lock.json --
{ "name": "bookings", "lockfileVersion": 3, "packages": { "": {}, "node_modules/express": { "version": "5.1.0" } } }
` + server, nil},
		{"a bare name in the requirements", `
-- requirements.txt --
# the web
flask
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/unpinned requirements.txt:2 pushed=risk"}},
		{"twin: an upper end is enough, a lower one is a choice", `
-- requirements.txt --
flask~=3.1
gunicorn>=23,<24
jinja2>=3
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"twin: hashes and markers", `
-- requirements.txt --
flask==3.1.2 \
    --hash=sha256:bf656c15c80190ed628ad08cdfd3aaa35beb087855e2f494910aa3774cc4fd87
gunicorn==23.0.0 ; python_version >= "3.9" --hash=sha256:ec400d38950de4dfd418cff8328b2c8faed0edb0d517d3394e457c317908ca4d
--index-url https://pypi.org/simple
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
	})
}

func TestLockMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"ranges", `
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "^5.1.0" } }
` + server, []string{"manifest/lock-missing package.json:1 pushed=risk"}},
		{"twin: with its lock", `
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "^5.1.0" } }
-- package-lock.json --
{ "lockfileVersion": 3, "packages": { "": { "dependencies": { "express": "^5.1.0" } }, "node_modules/express": { "version": "5.2.1" } } }
` + server, nil},
		{"a requirements file with an open line", `
-- requirements.txt --
flask~=3.1.0
gunicorn==23.0.0
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/lock-missing requirements.txt:1 pushed=risk"}},
		{"twin of lock: closed by constraints", `
-- requirements.txt --
-c constraints.txt
flask~=3.1.0
gunicorn>=22
-- constraints.txt --
flask==3.1.2
gunicorn==23.0.0
werkzeug==3.1.3
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"Poetry", `
-- pyproject.toml --
[tool.poetry]
name = "ticker"
[tool.poetry.dependencies]
python = "~3.14"
flask = "^3.1"
gunicorn = "^23.0"
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/lock-missing pyproject.toml:1 pushed=risk"}},
	})
}

func TestLockStale(t *testing.T) {
	t.Parallel()
	manifest := func(deps string) string {
		return `
-- package.json --
{
  "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" },
  "dependencies": { ` + deps + " }\n}\n"
	}
	const npmLock = `
-- package-lock.json --
{
  "lockfileVersion": 3,
  "packages": {
    "": { "dependencies": { "express": "^4.18.0" } },
    "node_modules/express": {
      "version": "4.21.2"
    },
    "node_modules/accepts/node_modules/koa": { "version": "2.0.0" }
  }
}
`
	runCases(t, []ruleCase{
		{"a version outside the range", manifest(`"express": "^5.1.0"`) + npmLock + server, []string{"manifest/lock-stale package-lock.json:5 pushed=blocker"}},
		{"a package that is not in it", manifest(`"express": "^4.20.0", "koa": "^2.0.0"`) + npmLock + server, []string{"manifest/lock-stale package-lock.json:1 pushed=blocker"}},
		{"twin: another text, the same version", manifest(`"express": ">=4.20 <5"`) + npmLock + server, nil},
		{"twin: an address, a folder, an alias", manifest(`"express": "npm:express@^4.0.0", "stars": "file:stars", "sky": "github:hill/sky"`) + npmLock + `
-- stars/package.json --
{ "name": "stars", "version": "1.0.0" }
` + server, nil},
		{"Yarn of old", manifest(`"express": "^5.0.0"`) + `
-- yarn.lock --
# yarn lockfile v1

accepts@~1.3.8:
  version "1.3.8"

express@^4.18.0, express@^4.20.0:
  version "4.21.2"
  dependencies:
    accepts "~1.3.8"
` + server, []string{"manifest/lock-stale yarn.lock:6 pushed=blocker"}},
		{"twin: Yarn of today", manifest(`"express": "^5.0.0"`) + `
-- yarn.lock --
__metadata:
  version: 8

"express@npm:^5.0.0":
  version: 5.2.1
  resolution: "express@npm:5.2.1"
` + server, nil},
		{"pnpm, of one package", manifest(`"express": "^5.0.0", "zod": "^4.0.0"`) + `
-- pnpm-lock.yaml --
lockfileVersion: '6.0'
dependencies:
  express:
    specifier: ^4.18.0
    version: 4.21.2
  zod:
    specifier: ^4.0.0
    version: 4.1.12
` + server, []string{"manifest/lock-stale pnpm-lock.yaml:3 pushed=blocker"}},
		{"uv, where a candidate is not the release", `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = "==3.14.*"
dependencies = ["flask>=3.2", "gunicorn"]
-- uv.lock --
version = 1
[[package]]
name = "flask"
version = "3.2.0rc1"
[[package]]
name = "gunicorn"
version = "23.0.0"
[[package]]
name = "ticker"
version = "0.1.0"
source = { virtual = "." }
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/lock-stale uv.lock:2 pushed=blocker"}},
		{"twin: Poetry, with a name in another form", `
-- pyproject.toml --
[tool.poetry]
name = "ticker"
[tool.poetry.dependencies]
python = "~3.14"
Flask = "^3.1"
Flask_Login = ">=0.6"
gunicorn = "*"
-- poetry.lock --
[[package]]
name = "flask"
version = "3.1.2"
[[package]]
name = "flask-login"
version = "0.6.3"
[[package]]
name = "gunicorn"
version = "23.0.0"
[metadata]
lock-version = "2.1"
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"hashes for some", `
-- requirements.txt --
flask==3.1.2 --hash=sha256:bf656c15c80190ed628ad08cdfd3aaa35beb087855e2f494910aa3774cc4fd87
gunicorn==23.0.0
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/lock-stale requirements.txt:2 pushed=blocker"}},
	})
}

func TestLockConflict(t *testing.T) {
	t.Parallel()
	const locks = `
-- package-lock.json --
{ "lockfileVersion": 3, "packages": { "node_modules/express": { "version": "5.1.0" } } }
-- yarn.lock --
express@5.1.0:
  version "5.1.0"
`
	runCases(t, []ruleCase{
		{"the manifest names the manager", nodeTree(`"engines": { "node": "24.x" }, "packageManager": "npm@11.6.2",`) + locks, []string{"manifest/lock-conflict yarn.lock:1 pushed=risk"}},
		{"nothing names one: npm writes its own unasked", nodeTree(`"engines": { "node": "24.x" },`) + locks, []string{"manifest/lock-conflict package-lock.json:1 pushed=risk"}},
		{"twin: two locks of one manager", nodeTree(`"engines": { "node": "24.x" },`) + `
-- package-lock.json --
{ "lockfileVersion": 3, "packages": { "node_modules/express": { "version": "5.1.0" } } }
-- npm-shrinkwrap.json --
{ "lockfileVersion": 3, "packages": { "node_modules/express": { "version": "5.1.0" } } }
`, nil},
		{"the one left over from Pipenv", `
-- pyproject.toml --
[project]
name = "ticker"
requires-python = "==3.14.*"
dependencies = ["flask", "gunicorn"]
[tool.uv]
package = false
-- uv.lock --
version = 1
[[package]]
name = "flask"
version = "3.2.0"
[[package]]
name = "gunicorn"
version = "23.0.0"
-- Pipfile.lock --
{ "default": { "flask": { "version": "==3.1.0" } } }
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/lock-conflict Pipfile.lock:1 pushed=risk"}},
	})
}

func TestDuplicateAndNativeBuild(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"twice in a requirements file", `
-- requirements.txt --
flask==3.1.1
gunicorn==23.0.0
Flask==3.1.2
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"manifest/duplicate requirements.txt:3 pushed=blocker"}},
		{"twin: under conditions, and in a file for work", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
tzdata==2025.1 ; sys_platform == "win32"
tzdata==2025.2 ; sys_platform == "linux"
-- requirements-dev.txt --
-r requirements.txt
flask==3.1.2
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"in two tables", nodeTree(`"engines": { "node": "24.x" },
  "devDependencies": { "express": "^4.0.0" },`), []string{"manifest/duplicate package.json:5 pushed=risk"}},
		{"compiled at install", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
psycopg2==2.9.10
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
-- Dockerfile --
FROM python:3.14-slim
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn", "-b", "0.0.0.0:8000", "app:app"]
` + flaskApp, []string{"manifest/native-build requirements.txt:3 pushed=risk image=blocker"}},
		{"twin: compiled already, or the container can", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
psycopg2-binary==2.9.10
uwsgi==2.0.31 ; python_version < "3"
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
	})
}

func TestDevOnlyAtBuild(t *testing.T) {
	t.Parallel()
	const manifest = `
-- package.json --
{
  "name": "gate", "engines": { "node": "24.x" },
  "scripts": { "build": "npm run types && vite build", "types": "tsc --noEmit", "start": "node server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": {
    "typescript": "5.9.3",
    "vite": "7.2.2"
  }
}
` + server
	const end = `
COPY . .
RUN npm run build
EXPOSE 3000
CMD ["node", "server.js"]
`
	runCases(t, []ruleCase{
		{"the container builds after installing without them", manifest + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY package.json ./
RUN npm install --omit=dev` + end, []string{"manifest/dev-only package.json:6 image=blocker", "manifest/dev-only package.json:7 image=blocker"}},
		{"by the environment", manifest + `
-- Dockerfile --
FROM node:24-slim
ENV NODE_ENV=production
WORKDIR /app
COPY package.json ./
RUN npm install` + end, []string{"manifest/dev-only package.json:6 image=blocker", "manifest/dev-only package.json:7 image=blocker"}},
		{"twin: all of them, then the build, then without", manifest + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY package.json ./
RUN npm install` + end + "RUN npm prune --omit=dev\n", nil},
		{"twin: the build in a stage of its own", manifest + `
-- Dockerfile --
FROM node:24-slim AS build
WORKDIR /app
COPY . .
RUN npm install && npm run build
FROM node:24-slim
WORKDIR /app
COPY package.json server.js ./
RUN npm install --omit=dev
COPY --from=build /app/dist ./dist
EXPOSE 3000
CMD ["node", "server.js"]
`, nil},
		{"configuration that the server loads", `
-- package.json --
{
  "name": "site", "engines": { "node": "24.x" },
  "scripts": { "build": "next build", "start": "next start -p $PORT" },
  "dependencies": { "next": "16.0.1", "react": "19.2.0", "react-dom": "19.2.0" },
  "devDependencies": { "@next/bundle-analyzer": "16.0.1" }
}
-- next.config.js --
const withAnalyzer = require("@next/bundle-analyzer")({ enabled: false });
module.exports = withAnalyzer({});
`, []string{"manifest/dev-only package.json:5 pushed=blocker"}},
	})
}
