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
gunicorn==23.0.0 ; python_version >= "3.9"
--index-url https://pypi.org/simple
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
	})
}
