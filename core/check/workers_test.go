package check_test

import "testing"

// workersOfCluster are programs whose workers get an environment of their own; each was run, and what it
// did was read from the kernel.
var workersOfCluster = []told{
	{"workers with their own environment share a port", `-- Procfile --
web: node index.js
-- package.json --
{"name":"star"}
-- index.js --
const cluster = require('node:cluster');
const { availableParallelism } = require('node:os');
const workers = Number(process.env.WEB_CONCURRENCY) || availableParallelism();
if (workers > 1 && cluster.isPrimary) {
  for (let i = 0; i < workers; i += 1) cluster.fork({ WORKER: i });
} else {
  require('node:http').createServer((q, r) => r.end(process.env.WORKER)).listen(process.env.PORT || 6801, '0.0.0.0');
}
`, ` => any 6801
WEB_CONCURRENCY=1 => any 6801
PORT=8801 => any 8801`},
	{"workers with ports of their own", `-- Procfile --
web: node index.js
-- package.json --
{"name":"star"}
-- index.js --
const cluster = require('node:cluster');
const base = Number(process.env.BASE || 6810);
if (cluster.isPrimary) {
  for (let i = 0; i < 2; i++) cluster.fork({ PORT: base + i });
} else {
  require('node:http').createServer((q, r) => r.end()).listen(process.env.PORT, '127.0.0.1');
}
`, ` => loopback 6810 & loopback 6811
BASE=7810 => loopback 7810 & loopback 7811`},
}

func TestWorkersOfCluster(t *testing.T) {
	t.Parallel()
	agree(t, workersOfCluster)
}

// The sound ones look like what a rule speaks of, and the tree says more.
func TestSoundWhereATreeSaysMore(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a fallback that a function of the tree is given", nodeManifest + `
-- server.js --
const int = (text, other) => { const n = Number.parseInt(text, 10); return Number.isFinite(n) ? n : other; };
const ttl = int(process.env.CACHE_TTL, 60);
require("express")().get("/", (q, r) => r.send(String(ttl))).listen(process.env.PORT || 3000);
`, nil},
		{"a function of the tree that insists", nodeManifest + `
-- server.js --
const must = (text, why) => { if (!text) throw new Error(why); return text; };
const key = must(process.env.STAR_KEY, "no key");
require("express")().get("/", (q, r) => r.send(key)).listen(process.env.PORT || 3000);
`, []string{"env/undeclared server.js:2 pushed=risk"}},
		{"a variable that the program sets for its workers", nodeManifest + `
-- server.js --
const cluster = require("node:cluster");
if (cluster.isPrimary) for (let i = 0; i < 2; i++) cluster.fork({ SKY_WORKER: i });
else require("express")().get("/", (q, r) => r.send(process.env.SKY_WORKER)).listen(process.env.PORT || 3000);
`, nil},
		{"modules of Go that the tree holds", `
-- Procfile --
web: bin/gate
-- go.mod --
module gate

go 1.25

require dome/env v1.0.0

replace dome/env => ./env
-- main.go --
package main

import (
	"net/http"

	"dome/env"
)

func main() { http.ListenAndServe(env.Addr(), nil) }
-- env/go.mod --
module dome/env

go 1.25
-- env/env.go --
package env

import "os"

func Addr() string {
	if p := os.Getenv("PORT"); p != "" {
		return ":" + p
	}
	return ":3000"
}
`, nil},
		{"rackup comes with Sinatra 3", `
-- Procfile --
web: bundle exec rackup -o 0.0.0.0 -p $PORT
-- Gemfile --
source "https://rubygems.org"
ruby "3.4.1"
gem "sinatra", "~> 3.2"
gem "webrick", "~> 1.9"
-- config.ru --
require "sinatra"
get("/") { "clear" }
run Sinatra::Application
`, []string{"manifest/lock-missing Gemfile:1 pushed=risk"}},
		{"and not with Sinatra 4", `
-- Procfile --
web: bundle exec rackup -o 0.0.0.0 -p $PORT
-- Gemfile --
source "https://rubygems.org"
ruby "3.4.1"
gem "sinatra", "~> 4.1"
gem "webrick", "~> 1.9"
-- config.ru --
require "sinatra"
get("/") { "clear" }
run Sinatra::Application
`, []string{"manifest/lock-missing Gemfile:1 pushed=risk", "start/program-undeclared Procfile:1 pushed=blocker"}},
		{"a command that takes the port away", nodeManifest + `
-- Procfile --
web: env -u PORT node server.js
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(process.env.PORT || 3000);
`, []string{"port/literal Procfile:1 pushed=blocker"}},
		{"a command that takes another variable away", nodeManifest + `
-- Procfile --
web: env -u DEBUG node server.js
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(process.env.PORT || 3000);
`, nil},
		{"a file that dotenv-cli reads for the command", nodeManifest + `
-- Procfile --
web: dotenv -e .env.live -- node server.js
-- .env.live --
SKY_PORT=4000
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(process.env.SKY_PORT);
`, []string{"port/other-name server.js:1 pushed=blocker", "start/program-undeclared Procfile:1 pushed=blocker"}},
		{"a file of lib that is nowhere", `
-- Procfile --
web: node server.js
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" } }
-- lib/star.js --
exports.stars = 1;
-- server.js --
const { stars } = require("./lib/stars");
require("http").createServer((q, r) => r.end(stars)).listen(process.env.PORT || 3000);
`, []string{"start/import-missing server.js:1 pushed=blocker"}},
		{"a file of lib that a script writes before the build", `
-- Procfile --
web: npm start
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "prebuild": "node scripts/stamp.js", "build": "node -e 0", "start": "node server.js" } }
-- scripts/stamp.js --
require("fs").writeFileSync(__dirname + "/../lib/version.js", "module.exports = 1;");
-- lib/star.js --
exports.stars = 1;
-- server.js --
const version = require("./lib/version");
const { stars } = require("./lib/star");
require("http").createServer((q, r) => r.end(version + stars)).listen(process.env.PORT || 3000);
`, nil},
		{"a file of lib that the settings of a compiler name", `
-- Procfile --
web: npm start
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "build": "tsc -p config/app.json", "start": "node server.js" }, "dependencies": { "typescript": "5.8.0" } }
-- config/app.json --
{ "compilerOptions": { "outDir": "../lib", "rootDir": "../src" }, "include": ["../src"] }
-- src/app.ts --
export const app = 1;
-- lib/readme.js --
// what is here by hand
-- server.js --
const { app } = require("./lib/app");
require("http").createServer((q, r) => r.end(String(app))).listen(process.env.PORT || 3000);
`, nil},
		{"what serves for good is in an if", `
-- Procfile --
web: bin/gate
-- go.mod --
module gate

go 1.26
-- main.go --
package main

import (
	"cmp"
	"log"
	"net/http"
	"os"
)

func main() {
	http.HandleFunc("/", func(w http.ResponseWriter, r *http.Request) {})
	addr := ":" + cmp.Or(os.Getenv("PORT"), "8080")
	if cert := os.Getenv("TLS_CERT"); cert != "" {
		log.Fatal(http.ListenAndServeTLS(addr, cert, os.Getenv("TLS_KEY"), nil))
	}
	log.Fatal(http.ListenAndServe(addr, nil))
}
`, nil},
		{"a file of lib that the build makes", `
-- Procfile --
web: node server.js
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "build": "babel src --out-dir lib" }, "dependencies": { "@babel/cli": "7.28.0", "@babel/core": "7.28.0" } }
-- lib/star.js --
exports.stars = 1;
-- src/stars.js --
export const stars = 1;
-- server.js --
const { stars } = require("./lib/stars");
require("http").createServer((q, r) => r.end(stars)).listen(process.env.PORT || 3000);
`, nil},
		{"variables that are taken by how they begin", `
-- Procfile --
web: python3 app.py
-- .python-version --
3.13
-- requirements.txt --

-- .env.example --
PORT=
STAR_LIMIT=5
MOON_LIMIT=5
-- app.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

limits = {k[5:]: v for k, v in os.environ.items() if k.startswith("STAR_")}
HTTPServer(("0.0.0.0", int(os.environ.get("PORT", 8000))), BaseHTTPRequestHandler).serve_forever()
`, []string{"env/unused .env.example:3 pushed=advice"}},
		{"a server in a folder, and nothing that starts it", `
-- package.json --
{ "name": "bookings", "engines": { "node": "24.x" }, "dependencies": { "express": "5.1.0" } }
-- lib/app.js --
require("express")().listen(process.env.PORT || 3000);
`, []string{"start/missing package.json:1 pushed=blocker"}},
		{"a library whose tests listen", `
-- package.json --
{ "name": "stars", "engines": { "node": "24.x" }, "dependencies": { "express": "5.1.0" } }
-- lib/stars.js --
module.exports = require("express").Router();
-- test/server.js --
require("express")().listen(3000);
`, []string{"runtime/undetected ."}},
		{"packages in a folder that NODE_PATH names", nodeManifest + `
-- Procfile --
web: NODE_PATH=lib node server.js
-- lib/settings/index.js --
exports.port = process.env.PORT || 3000;
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(require("settings").port);
`, nil},
		{"modules in a folder that the script puts into sys.path", flaskManifest + `
-- Procfile --
web: python bin/serve.py
-- bin/serve.py --
import os
import sys

sys.path.insert(0, os.path.join(os.path.dirname(os.path.abspath(__file__)), "..", "lib"))
from gate import serve

serve()
-- lib/gate.py --
import os

import waitress
from flask import Flask

app = Flask(__name__)


@app.get("/")
def home():
    return "clear"


def serve():
    waitress.serve(app, host="0.0.0.0", port=int(os.environ.get("PORT", 8080)))
`, nil},
	})
}
