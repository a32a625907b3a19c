package check_test

import (
	"strings"
	"testing"
)

// Pieces that most trees share, so that each case shows what matters.
const (
	nodeManifest = `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0", "fastify": "5.6.1" }
}
`
	flaskManifest = `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
fastapi==0.121.0
uvicorn==0.38.0
waitress==3.0.2
-- .python-version --
3.13
`
)

func TestPortLiteral(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a number in listen", nodeManifest + `
-- server.js --
const express = require("express");
const app = express();
app.get("/", (req, res) => res.send("clear"));
app.listen(3000, () => console.log("up"));
`, []string{"port/literal server.js:4 pushed=blocker"}},
		{"twin: the number is the fallback", nodeManifest + `
-- server.js --
const express = require("express");
const app = express();
app.get("/", (req, res) => res.send("clear"));
app.listen(process.env.PORT || 3000, () => console.log("up on 3000"));
`, nil},
		{"a constant in another file", nodeManifest + `
-- server.js --
import { PORT } from "./config.js";
import express from "express";
express().listen(PORT);
-- config.js --
export const HOST = "0.0.0.0";
export const PORT = 8080;
`, []string{"port/literal config.js:2 pushed=blocker"}},
		{"twin: the constant is replaced below", nodeManifest + `
-- server.js --
import { PORT } from "./config.js";
import express from "express";
express().listen(PORT);
-- config.js --
let port = 8080;
if (process.env.PORT) port = Number(process.env.PORT);
export const PORT = port;
`, nil},
		{"the default of a parameter", nodeManifest + `
-- server.js --
const express = require("express");
function start(port = 4000) {
  express().listen(port);
}
start();
`, []string{"port/literal server.js:2 pushed=blocker"}},
		{"twin: the caller passes the variable", nodeManifest + `
-- server.js --
const express = require("express");
function start(port = 4000) {
  express().listen(port);
}
start(process.env.PORT);
`, nil},
		{"the command takes the variable away", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"scripts":{"start":"env -u PORT node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
`, []string{"port/literal package.json:1 pushed=blocker"}},
		{"twin: the command gives it again", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"scripts":{"start":"env -i PATH=/usr/bin:/bin PORT=$PORT node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
`, nil},
		{"twin: under another name", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"scripts":{"start":"env -i PATH=/usr/bin:/bin GATE=$PORT node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.GATE || 4000);
`, nil},
		{"it takes away what nothing reads", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"scripts":{"start":"env -u PORT node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(4000);
`, []string{"port/literal server.js:1 pushed=blocker"}},
		{"a dotenv file that beats the environment", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"dependencies":{"env-cmd":"11.0.0"},"scripts":{"start":"env-cmd node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
-- .env --
PORT=5000
`, []string{"port/literal .env:1 pushed=blocker"}},
		{"twin: one that does not", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"dependencies":{"env-cmd":"11.0.0"},"scripts":{"start":"env-cmd --no-override node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
-- .env --
PORT=5000
`, nil},
		{"the flag that lets it win", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"dependencies":{"dotenv-cli":"10.0.0"},"scripts":{"start":"dotenv -o -- node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
-- .env --
PORT=5000
`, []string{"port/literal .env:1 pushed=blocker"}},
		{"twin: without that flag", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"dependencies":{"dotenv-cli":"10.0.0"},"scripts":{"start":"dotenv -- node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
-- .env --
PORT=5000
`, nil},
		{"a variable set by a flag", `
-- package.json --
{"name":"dome","version":"1.0.0","engines":{"node":"22"},"dependencies":{"dotenv-cli":"10.0.0"},"scripts":{"start":"dotenv -v PORT=4100 -- node server.js"}}
-- server.js --
require("http").createServer((q, r) => r.end("dome")).listen(process.env.PORT || 4000);
`, []string{"env/reserved package.json:1 pushed=risk", "port/literal package.json:1 pushed=blocker"}},
		{"a flag of the server", flaskManifest + `
-- Procfile --
web: gunicorn app:app --bind 0.0.0.0:8000
-- app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"port/literal Procfile:1 pushed=blocker"}},
		{"twin: the variable in the flag", flaskManifest + `
-- Procfile --
web: gunicorn app:app --bind 0.0.0.0:${PORT:-8000}
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: gunicorn takes PORT by itself", flaskManifest + `
-- Procfile --
web: gunicorn app:app --workers 3
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"the server's own default", flaskManifest + `
-- Procfile --
web: uvicorn app:app --host 0.0.0.0
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, []string{"port/literal Procfile:1 pushed=blocker"}},
		{"a settings file of the server", flaskManifest + `
-- Procfile --
web: gunicorn -c conf/gunicorn.py app:app
-- conf/gunicorn.py --
workers = 2
bind = "0.0.0.0:8000"
-- app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"port/literal conf/gunicorn.py:2 pushed=blocker"}},
		{"twin: the settings file reads the variable", flaskManifest + `
-- Procfile --
web: gunicorn -c conf/gunicorn.py app:app
-- conf/gunicorn.py --
import os
bind = f"0.0.0.0:{os.environ.get('PORT', '8000')}"
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: a second server on loopback for metrics", nodeManifest + `
-- server.js --
const http = require("http");
const express = require("express");
express().listen(process.env.PORT || 3000);
http.createServer((req, res) => res.end("metrics")).listen(9091, "127.0.0.1");
`, nil},
		{"twin: a number in a comment, a text and a test", nodeManifest + `
-- server.js --
// app.listen(3000) was here once
const express = require("express");
const help = "app.listen(3000)";
express().listen(process.env.PORT ?? 3000, () => console.log(help));
-- test/server.test.js --
const express = require("express");
express().listen(3999);
`, nil},
		{"twin: a script that no start runs", nodeManifest + `
-- server.js --
require("express")().listen(process.env.PORT || 3000);
-- tools/preview.js --
require("express")().listen(4444);
`, nil},
		{"twin: the number is for work at home", nodeManifest + `
-- server.js --
const express = require("express");
const port = process.env.NODE_ENV === "production" ? process.env.PORT : 3000;
express().listen(port);
`, nil},
		{"the branch of production", nodeManifest + `
-- server.js --
const express = require("express");
let port = process.env.PORT;
if (process.env.NODE_ENV === "production") {
  port = 80;
}
express().listen(port);
`, []string{"port/literal server.js:4 pushed=blocker"}},
		{"twin: only when it is the program", nodeManifest + `
-- server.js --
const app = require("./app");
app.listen(process.env.PORT || 3000);
-- app.js --
const app = require("express")();
if (require.main === module) {
  app.listen(5555);
}
module.exports = app;
`, nil},
	})
}

func TestPortNameCase(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"lower case", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.port || 3000);
`, []string{"port/name-case server.js:2 pushed=blocker"}},
		{"twin: the right name among others in lower case", nodeManifest + `
-- server.js --
const port = process.env.PORT || 3000;
const app = require("express")();
app.listen(port, () => console.log("port", port));
`, nil},
		{"in an index", nodeManifest + `
-- server.js --
const app = require("express")();
const env = process.env;
app.listen(Number(env["Port"]) || 3000);
`, []string{"port/name-case server.js:3 pushed=blocker"}},
		{"in Python", flaskManifest + `
-- Procfile --
web: python serve.py
-- serve.py --
import os
from flask import Flask
from waitress import serve
app = Flask(__name__)
serve(app, host="0.0.0.0", port=int(os.environ.get("port", 8000)))
`, []string{"port/name-case serve.py:5 pushed=blocker"}},
		{"twin: a settings class reads in any letter case", `
-- requirements.txt --
fastapi==0.121.0
uvicorn==0.38.0
pydantic-settings==2.11.0
-- .python-version --
3.13
-- Procfile --
web: python serve.py
-- serve.py --
import uvicorn
from fastapi import FastAPI
from pydantic_settings import BaseSettings

class Settings(BaseSettings):
    host: str = "0.0.0.0"
    port: int = 8000

settings = Settings()
app = FastAPI()
uvicorn.run(app, host=settings.host, port=settings.port)
`, nil},
		{"in the start command", flaskManifest + `
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $port
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, []string{"port/name-case Procfile:1 pushed=blocker"}},
	})
}

func TestPortOtherName(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"another variable with a fallback", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.SERVER_PORT || 3000);
`, []string{"port/other-name server.js:2 pushed=blocker"}},
		{"twin: the other variable is asked second", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || process.env.SERVER_PORT || 3000);
`, nil},
		{"twin: the start script hands it on", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "SERVER_PORT=$PORT node server.js" },
  "dependencies": { "express": "5.1.0" }
}
-- server.js --
const app = require("express")();
app.listen(process.env.SERVER_PORT || 3000);
`, nil},
		{"a settings class with a prefix", `
-- requirements.txt --
fastapi==0.121.0
uvicorn==0.38.0
pydantic-settings==2.11.0
-- .python-version --
3.13
-- Procfile --
web: python serve.py
-- serve.py --
import uvicorn
from fastapi import FastAPI
from pydantic_settings import BaseSettings, SettingsConfigDict

class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="DOME_")
    port: int = 8000

app = FastAPI()
uvicorn.run(app, host="0.0.0.0", port=Settings().port)
`, []string{"port/other-name serve.py:7 pushed=blocker"}},
	})
}

func TestPortLoopback(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a host that is localhost", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000, "localhost");
`, []string{"port/loopback server.js:2 pushed=blocker"}},
		{"twin: any interface", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000, "0.0.0.0", () => console.log("http://localhost"));
`, nil},
		{"Fastify without a host", nodeManifest + `
-- server.js --
import Fastify from "fastify";
const app = Fastify();
await app.listen({ port: process.env.PORT || 3000 });
`, []string{"port/loopback server.js:3 pushed=blocker"}},
		{"twin: Fastify with a host", nodeManifest + `
-- server.js --
import Fastify from "fastify";
const app = Fastify();
await app.listen({ port: process.env.PORT || 3000, host: process.env.HOST || "::" });
`, nil},
		{"uvicorn without a host", flaskManifest + `
-- Procfile --
web: uvicorn app:app --port $PORT
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, []string{"port/loopback Procfile:1 pushed=blocker"}},
		{"gunicorn told so", flaskManifest + `
-- Procfile --
web: gunicorn app:app -b 127.0.0.1:$PORT
-- app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"port/loopback Procfile:1 pushed=blocker"}},
		{"twin: two binds, one of them public", flaskManifest + `
-- Procfile --
web: gunicorn app:app -b 127.0.0.1:9000 -b 0.0.0.0:$PORT
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"both: a literal and loopback", flaskManifest + `
-- Procfile --
web: python serve.py
-- serve.py --
import uvicorn
from fastapi import FastAPI
app = FastAPI()
uvicorn.run(app, host="127.0.0.1", port=8000)
`, []string{"port/literal serve.py:4 pushed=blocker", "port/loopback serve.py:4 pushed=blocker"}},
		{"twin: the host is for work at home", nodeManifest + `
-- server.js --
const app = require("express")();
const host = process.env.NODE_ENV === "production" ? "0.0.0.0" : "127.0.0.1";
app.listen(process.env.PORT || 3000, host);
`, nil},
	})
}

func TestPortNoFallback(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"nothing when it is not set", nodeManifest + `
-- server.js --
const app = require("express")();
app.listen(process.env.PORT);
`, []string{"port/no-fallback server.js:2 pushed=advice"}},
		{"an exception when it is not set", flaskManifest + `
-- Procfile --
web: python serve.py
-- serve.py --
import os
from waitress import serve
from flask import Flask
serve(Flask(__name__), port=int(os.environ["PORT"]))
`, []string{"port/no-fallback serve.py:4 pushed=advice"}},
		{"twin: a fallback after a test", nodeManifest + `
-- server.js --
const app = require("express")();
let port = parseInt(process.env.PORT, 10);
if (isNaN(port)) port = 3000;
app.listen(port);
`, nil},
		{"twin: a fallback in an except", flaskManifest + `
-- Procfile --
web: python serve.py
-- serve.py --
import os
from waitress import serve
from flask import Flask
try:
    port = int(os.environ["PORT"])
except KeyError:
    port = 8000
serve(Flask(__name__), port=port)
`, nil},
		{"in a container nobody sets it", nodeManifest + `
-- Dockerfile --
FROM node:24-slim
COPY . .
RUN npm install
CMD ["node", "server.js"]
-- server.js --
const app = require("express")();
app.listen(process.env.PORT);
`, []string{"port/no-fallback server.js:2 pushed=advice image=blocker"}},
		{"twin: the container sets it", nodeManifest + `
-- Dockerfile --
FROM node:24-slim
ENV PORT=8080
COPY . .
RUN npm install
EXPOSE 8080
CMD ["node", "server.js"]
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, nil},
	})
}

// stagedService is a service that is compiled before it runs.
const stagedService = `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "build": "tsc", "start": "node dist/main.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "typescript": "5.9.3" }
}
-- tsconfig.json --
{ "compilerOptions": { "rootDir": "src", "outDir": "dist" } }
-- src/main.ts --
import express from "express";
const app = express();
app.listen(Number(process.env.PORT) || 3000);
`

func TestPortMismatch(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"EXPOSE says another number", nodeManifest + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
RUN npm ci
EXPOSE 8080
CMD ["node", "server.js"]
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, []string{"port/mismatch Dockerfile:5 image=blocker"}},
		{"twin: ENV makes them agree", nodeManifest + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
ENV PORT=8080
COPY . .
RUN npm ci
EXPOSE 8080
CMD ["node", "server.js"]
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, nil},
		{"the code is built in one stage and runs in another", stagedService + `
-- Dockerfile --
FROM node:24-slim AS build
WORKDIR /src
COPY . .
RUN npm ci && npm run build && npm prune --omit=dev

FROM node:24-slim
WORKDIR /app
COPY --from=build /src/node_modules ./node_modules
COPY --from=build /src/dist ./
EXPOSE 8080
CMD ["node", "main.js"]
`, []string{"port/mismatch Dockerfile:10 image=blocker"}},
		{"twin: the stages agree", stagedService + `
-- Dockerfile --
FROM node:24-slim AS base
WORKDIR /src
ENV PORT=8080

FROM base AS build
COPY . .
RUN npm ci && npm run build && npm prune --omit=dev

FROM base
COPY --from=build /src/node_modules ./node_modules
COPY --from=build /src/dist ./dist
COPY package.json .
EXPOSE 8080
CMD ["node", "dist/main.js"]
`, nil},
		{"twin: one of two ports", nodeManifest + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
RUN npm ci
EXPOSE 9091 3000
CMD ["node", "server.js"]
-- server.js --
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, nil},
		{"a mapping of gunicorn's default", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
EXPOSE 5000
CMD gunicorn --bind 0.0.0.0:8000 app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
-- Procfile --
web: gunicorn app:app
`, []string{"port/mismatch Dockerfile:5 image=blocker"}},
		{"twin: the port is an argument of the build", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
ARG LISTEN=8000
ENV PORT=$LISTEN
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
EXPOSE $LISTEN
CMD gunicorn --bind 0.0.0.0:$PORT app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
-- Procfile --
web: gunicorn app:app
`, nil},
	})
}

func TestPortUnexpanded(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"an exec form", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
ENV PORT=8080
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8080
CMD ["gunicorn", "--bind", "0.0.0.0:$PORT", "app:app"]
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"port/unexpanded Dockerfile:7 image=blocker"}},
		{"twin: the exec form of a shell", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
ENV PORT=8080
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8080
CMD ["sh", "-c", "exec gunicorn --bind 0.0.0.0:$PORT app:app"]
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: the shell form", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
ENV PORT=8080
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8080
CMD gunicorn --bind 0.0.0.0:$PORT app:app
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"single quotes", flaskManifest + `
-- Procfile --
web: gunicorn app:app --bind '0.0.0.0:$PORT'
-- app.py --
from flask import Flask
app = Flask(__name__)
`, []string{"port/unexpanded Procfile:1 pushed=blocker"}},
		{"twin: a nested class of Java", `
-- Procfile --
web: java -cp target/classes 'dome.Sky$Main'
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>dome</artifactId><version>1</version><properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/dome/Sky.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Sky {
    public static class Main {
        public static void main(String[] args) throws Exception {
            HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "8080"))), 0).start();
        }
    }
}
`, nil},
		{"twin: a server in front that the start runs too", flaskManifest + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
COPY . .
RUN apt-get update && apt-get install -y nginx && pip install -r requirements.txt
EXPOSE 8080
CMD ["sh", "-c", "nginx -c /srv/nginx.conf && exec gunicorn --bind 127.0.0.1:8001 app:app"]
-- nginx.conf --
events {}
http {
  server {
    listen 0.0.0.0:8080;
    location / { proxy_pass http://127.0.0.1:8001; }
  }
}
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: a socket file behind it", flaskManifest + `
-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
set -e
nginx -c "$PWD/nginx.conf" &
exec gunicorn --bind unix:/run/dome.sock app:app
-- nginx.conf --
events {}
http {
  server {
    listen 0.0.0.0:8080;
    location / { proxy_pass http://127.0.0.1:8001; }
  }
}
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: double quotes", flaskManifest + `
-- Procfile --
web: gunicorn app:app --bind "0.0.0.0:$PORT"
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: a regular expression in single quotes", flaskManifest + `
-- Procfile --
web: gunicorn app:app --bind 0.0.0.0:$PORT --access-logformat '%(h)s$'
-- app.py --
from flask import Flask
app = Flask(__name__)
`, nil},
	})
}

func TestTrailLeadsFromTheCallToTheValue(t *testing.T) {
	t.Parallel()
	r := run(t, plant(t, nodeManifest+`
-- server.js --
const config = require("./config");
require("express")().listen(config.http.port);
-- config/index.js --
const base = require("./base");
module.exports = { ...base, name: "hill" };
-- config/base.js --
module.exports = { http: { port: process.env.port || 3000 } };
`), nil)
	f := finding(t, r, "port/name-case")
	var steps []string
	for _, s := range f.Trail {
		steps = append(steps, s.At.File)
	}
	got := strings.Join(steps, " ")
	if !strings.HasPrefix(got, "server.js") || !strings.Contains(got, "config/index.js") || !strings.HasSuffix(got, "config/base.js") {
		t.Errorf("the trail goes through %s", got)
	}
	if want := "process.env.PORT || 3000"; f.Remedy != want {
		t.Errorf("the remedy is %q, not %q", f.Remedy, want)
	}
	if f.Where.Col != 34 || f.Where.EndCol != 50 {
		t.Errorf("the span is %d to %d, not the read of the variable", f.Where.Col, f.Where.EndCol)
	}
}

// TestNetworkBeforeAddress has an address behind the name of its network, which is
// no address where the network is cut off first.
func TestNetworkBeforeAddress(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{{"the network is cut off", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.24
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
	"strings"
)

func listener(spec string) (net.Listener, error) {
	network, address, found := strings.Cut(spec, ":")
	if !found {
		return net.Listen("tcp", spec)
	}
	return net.Listen(network, address)
}

func main() {
	spec, ok := os.LookupEnv("LISTEN")
	if !ok {
		spec = "tcp:0.0.0.0:" + os.Getenv("PORT")
	}
	l, err := listener(spec)
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.Serve(l, http.NotFoundHandler()))
}
`, nil}})
}
