package check_test

import "testing"

// builder is a server that is put together by calls of its own.
const builder = nodeManifest + `
-- lib/builder.js --
const http = require("http");
class Builder {
  #port = 8402;
  #host = "127.0.0.1";
  port(value) { if (value) this.#port = Number(value); return this; }
  host(value) { this.#host = value; return this; }
  open() { return http.createServer((q, r) => r.end("gate")).listen(this.#port, this.#host); }
}
module.exports = () => new Builder();
`

// TestGoneThrough holds programs whose values do not tell where they listen, and
// near-identical ones that are sound.
func TestGoneThrough(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a builder that is never told the port", builder + `
-- server.js --
const build = require("./lib/builder");
build().host("0.0.0.0").open();
`, []string{"port/literal lib/builder.js:3 pushed=blocker"}},
		{"twin: it is told", builder + `
-- server.js --
const build = require("./lib/builder");
build().port(process.env.PORT).host("0.0.0.0").open();
`, nil},
		{"a builder on loopback", builder + `
-- server.js --
const build = require("./lib/builder");
build().port(process.env.PORT).open();
`, []string{"port/loopback lib/builder.js:4 pushed=blocker"}},
		{"a table of settings with a prefix", nodeManifest + `
-- server.js --
const http = require("http");
const defaults = { host: "0.0.0.0", port: "8402" };
const given = {};
for (const key of Object.keys(defaults)) {
  const name = "GATE_" + key.toUpperCase();
  given[key] = process.env[name] ?? defaults[key];
}
http.createServer((q, r) => r.end("gate")).listen(given.port, given.host);
`, []string{"port/other-name server.js:6 pushed=blocker"}},
		{"twin: without the prefix", nodeManifest + `
-- server.js --
const http = require("http");
const defaults = { host: "0.0.0.0", port: "8402" };
const given = {};
for (const key of Object.keys(defaults)) {
  given[key] = process.env[key.toUpperCase()] ?? defaults[key];
}
http.createServer((q, r) => r.end("gate")).listen(given.port, given.host);
`, nil},
		{"a variable in lower case", nodeManifest + `
-- server.js --
const http = require("http");
const read = (names) => { let v; for (const n of names) v ??= process.env[n]; return v; };
http.createServer((q, r) => r.end("gate")).listen(read(["port"]) ?? 8402);
`, []string{"port/name-case server.js:2 pushed=blocker"}},
		{"twin: both are asked", nodeManifest + `
-- server.js --
const http = require("http");
const read = (names) => { let v; for (const n of names) v ??= process.env[n]; return v; };
http.createServer((q, r) => r.end("gate")).listen(read(["port", "PORT"]) ?? 8402);
`, nil},
		{"a program without an ending or a first line that tells", `
-- Procfile --
web: ruby bin/gate
-- Gemfile --
source "https://rubygems.org"
ruby "3.3.6"
-- Gemfile.lock --
GEM
  remote: https://rubygems.org/
  specs:

PLATFORMS
  ruby

DEPENDENCIES

RUBY VERSION
   ruby 3.3.6p108
-- bin/gate --
require "socket"
server = TCPServer.new("0.0.0.0", 8402)
loop { server.accept.close }
`, []string{"port/literal bin/gate:2 pushed=blocker"}},
		{"twin: the else of a loop of Python, which a break passes", `
-- Procfile --
web: python main.py
-- .python-version --
3.13
-- requirements.txt --
-- main.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler

conf = {}
for key, fallback in {"host": "0.0.0.0", "port": "8402"}.items():
    for name in ("GATE_" + key.upper(), key.upper()):
        if name in os.environ:
            conf[key] = os.environ[name]
            break
    else:
        conf[key] = fallback
HTTPServer((conf["host"], int(conf["port"])), BaseHTTPRequestHandler).serve_forever()
`, nil},
	})
}
