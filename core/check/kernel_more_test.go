package check_test

// More servers, each written once without a look at how it would be read.

var moreProofs = []proof{
	{"data that is awaited beside the module", "node", `-- package.json --
{"name":"g","type":"module"}
-- server.js --
import { createServer } from "node:http";
import { readFile } from "node:fs/promises";
const defaults = JSON.parse(await readFile(new URL("./defaults.json", import.meta.url), "utf8"));
const config = { ...defaults, port: process.env.PORT ? Number(process.env.PORT) : defaults.port };
const server = createServer((req, res) => res.end("x"));
server.listen(config.port, config.host, () => console.log(server.address()));
-- defaults.json --
{"port":0,"host":"0.0.0.0"}
`, "node server.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a port that is put right", "node", `-- bin/www --
#!/usr/bin/env node
var http = require("http");
var port = normalizePort(process.env.PORT || "0");
var server = http.createServer();
server.listen(port);
server.on("error", onError);
function normalizePort(val) {
  var port = parseInt(val, 10);
  if (isNaN(port)) {
    return val;
  }
  if (port >= 0) {
    return port;
  }
  return false;
}
function onError(e) { throw e; }
`, "node ./bin/www", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a class that comes from the server", "node", `-- main.js --
const { Server } = require("http");
class Gate extends Server {
  constructor(opts) { super(); this.opts = { port: 0, ...opts }; }
  start() { return this.listen(this.opts.port, this.opts.host); }
}
new Gate({ host: process.env.HOST || "::" }).start();
`, "node main.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a helper that asks whether a name is there", "node", `-- s.js --
const env = (name, fallback) => name in process.env && process.env[name] !== "" ? process.env[name] : fallback;
const port = ~~env("PORT", 0);
const host = env("HOST");
require("net").createServer().listen({ port, host, exclusive: true });
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a switch on what holds", "node", `-- s.js --
switch (true) {
  case process.env.PORT === undefined:
    var p = 0; break;
  case process.env.PORT === "":
    p = 0; break;
  default:
    p = process.env.PORT;
}
require("http").createServer().listen(p);
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an address that is taken apart", "node", `-- s.js --
const url = new URL(process.env.LISTEN || "http://0.0.0.0:0");
require("http").createServer().listen(Number(url.port), url.hostname);
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"the first of several that is there", "node", `-- package.json --
{"name":"g","dependencies":{}}
-- s.js --
const http = require("http");
const ports = [process.env.HTTP_PORT, process.env.PORT, "0"].filter(Boolean);
http.createServer().listen(ports[0]);
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a choice by what it runs for", "node", `-- package.json --
{"name":"g","dependencies":{}}
-- s.js --
const http = require("http");
const isProd = process.env.NODE_ENV === "production";
const server = http.createServer();
server.listen(isProd ? process.env.PORT : 0, isProd ? undefined : "localhost");
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"arguments that are parsed", "node", `-- package.json --
{"name":"g","dependencies":{}}
-- s.js --
const http = require("http");
const { parseArgs } = require("util");
const { values } = parseArgs({ options: { port: { type: "string", short: "p", default: process.env.PORT || "0" }, host: { type: "string" } } });
http.createServer().listen(Number(values.port), values.host);
`, "node s.js --host localhost", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"options that are put over others", "node", `-- package.json --
{"name":"g","dependencies":{}}
-- s.js --
require("./lib/server").start(require("http"));
-- lib/server.js --
const DEFAULTS = Object.freeze({ port: 0, host: "::" });
exports.start = (http, overrides = {}) => {
  const options = Object.assign({}, DEFAULTS, overrides);
  const server = http.createServer();
  return server.listen(options);
};
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"destructuring that is set again", "node", `-- package.json --
{"name":"g","dependencies":{}}
-- s.js --
let { PORT: port, HOST: host = "0.0.0.0" } = process.env;
port ||= 0;
require("net").createServer((s) => s.end()).listen(+port, host);
`, "node s.js", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a text that is stripped", "python3", `-- main.py --
import os, logging
from http.server import ThreadingHTTPServer, SimpleHTTPRequestHandler
from functools import partial

log = logging.getLogger(__name__)

def get_port(default=0):
    raw = os.environ.get("PORT", "").strip()
    if not raw:
        return default
    return int(raw)

def serve():
    addr = (os.environ.get("HOST", ""), get_port())
    with ThreadingHTTPServer(addr, partial(SimpleHTTPRequestHandler, directory=".")) as httpd:
        httpd.serve_forever()

if __name__ == "__main__":
    serve()
`, "python3 main.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"settings in TOML", "python3", `-- s.py --
import os
import tomllib
from pathlib import Path
from wsgiref.simple_server import make_server
conf = tomllib.loads(Path("conf.toml").read_text())
port = int(os.getenv("PORT") or conf["server"]["port"])
make_server(conf["server"].get("host", "127.0.0.1"), port, None).serve_forever()
-- conf.toml --
[server]
port = 0
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"the rest of the arguments", "python3", `-- s.py --
import asyncio, os, sys
async def handle(r, w):
    w.close()
async def main(argv):
    port = int(argv[0]) if argv else int(os.environ.get("PORT", 0))
    server = await asyncio.start_server(handle, host=None, port=port)
    await server.serve_forever()
asyncio.run(main(sys.argv[1:]))
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an assertion", "python3", `-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
PORT = os.environ.get("PORT")
assert PORT, "PORT must be set"
HTTPServer(("", int(PORT)), BaseHTTPRequestHandler).serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"commands below a command", "python3", `-- s.py --
import argparse, os
from http.server import HTTPServer, BaseHTTPRequestHandler
def parse():
    p = argparse.ArgumentParser()
    sub = p.add_subparsers(dest="cmd")
    r = sub.add_parser("run")
    r.add_argument("--port", type=int, default=int(os.environ.get("PORT") or 0))
    r.add_argument("--bind", default="127.0.0.1")
    return p.parse_args()
if __name__ == "__main__":
    a = parse()
    if a.cmd == "run":
        HTTPServer((a.bind, a.port), BaseHTTPRequestHandler).serve_forever()
`, "python3 s.py run --bind 0.0.0.0", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"errors that are suppressed", "python3", `-- s.py --
import os
from contextlib import suppress
from http.server import HTTPServer, BaseHTTPRequestHandler
port = 0
with suppress(KeyError, ValueError):
    port = int(os.environ["PORT"])
HTTPServer(("localhost", port), BaseHTTPRequestHandler).serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"classes of settings by a name", "python3", `-- s.py --
import os

class Config:
    HOST = "127.0.0.1"
    PORT = 0

class Production(Config):
    HOST = "0.0.0.0"
    PORT = int(os.environ.get("PORT") or Config.PORT)

configs = {"production": Production}
config = configs.get(os.environ.get("APP_ENV"), Config)

from http.server import HTTPServer, BaseHTTPRequestHandler
HTTPServer((config.HOST, config.PORT), BaseHTTPRequestHandler).serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an end with a reason", "python3", `-- s.py --
import os
import sys
from wsgiref.simple_server import make_server

port = os.environ.get("PORT")
if port is None:
    sys.exit("PORT is required")
try:
    port = int(port)
except ValueError:
    sys.exit("PORT must be a number")
make_server("", port, lambda e, s: []).serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"fields that a function makes", "python3", `-- s.py --
from dataclasses import dataclass, field
import os
from socketserver import ThreadingTCPServer, BaseRequestHandler

@dataclass(frozen=True)
class Settings:
    host: str = field(default_factory=lambda: os.environ.get("HOST", "0.0.0.0"))
    port: int = field(default_factory=lambda: int(os.environ.get("PORT") or 0))

settings = Settings()
with ThreadingTCPServer((settings.host, settings.port), BaseRequestHandler) as s:
    s.serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"settings in sections", "python3", `-- s.py --
import configparser, os
from http.server import HTTPServer, BaseHTTPRequestHandler
cfg = configparser.ConfigParser()
cfg.read("app.ini")
port = os.environ.get("PORT") or cfg.getint("web", "port", fallback=0)
HTTPServer((cfg["web"]["host"], int(port)), BaseHTTPRequestHandler).serve_forever()
-- app.ini --
[web]
host = 127.0.0.1
port = 0
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a text that is cut at its end", "python3", `-- s.py --
import os
from http.server import HTTPServer as Server, BaseHTTPRequestHandler as Handler

ADDRESS = os.environ.get("ADDRESS", "0.0.0.0:%s" % os.environ.get("PORT", "0"))
host, _, port = ADDRESS.rpartition(":")
Server((host, int(port or 0)), Handler).serve_forever()
`, "python3 s.py", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"settings in YAML and a block", "ruby", `-- server.rb --
# frozen_string_literal: true
require "socket"
require "yaml"
config = YAML.load_file(File.join(__dir__, "config.yml"))
port = Integer(ENV.fetch("PORT") { config["port"] })
server = TCPServer.new(config.fetch("host", "127.0.0.1"), port)
loop { server.accept.close }
-- config.yml --
port: 0
host: 0.0.0.0
`, "ruby server.rb", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"methods of the class itself", "ruby", `-- server.rb --
require "socket"
module Gate
  DEFAULT_PORT = 0
  class << self
    def port
      value = ENV["PORT"]
      return DEFAULT_PORT if value.nil? || value.empty?
      value.to_i
    end
  end
end
Socket.tcp_server_loop("127.0.0.1", Gate.port) { |s, _| s.close }
`, "ruby server.rb", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"options of the command", "ruby", `-- server.rb --
require "socket"
require "optparse"
options = { port: 0, host: "127.0.0.1" }
OptionParser.new do |o|
  o.on("-p", "--port PORT", Integer) { |v| options[:port] = v }
  o.on("-b", "--bind HOST") { |v| options[:host] = v }
end.parse!
s = TCPServer.new(*options.values_at(:host, :port))
loop { s.accept.close }
`, "ruby server.rb -p ${PORT:-0} -b 0.0.0.0", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a block on a value", "ruby", `-- s.rb --
require "socket"
PORT = ENV["PORT"].to_s.then { |p| p.empty? ? 0 : Integer(p) }
HOST = ENV.key?("HOST") ? ENV["HOST"] : "0.0.0.0"
s = TCPServer.new(HOST, PORT)
loop { s.accept.close }
`, "ruby s.rb", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"settings in JSON", "ruby", `-- s.rb --
require "json"
require "socket"
conf = JSON.parse(File.read("conf.json"), symbolize_names: true)
port = ENV["PORT"] && !ENV["PORT"].empty? ? ENV["PORT"] : conf[:port]
s = TCPServer.new(conf[:host], port)
loop { s.accept.close }
-- conf.json --
{"port": 0, "host": "127.0.0.1"}
`, "ruby s.rb", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a factory and a text of an object", "php", `-- server.php --
<?php
declare(strict_types=1);
namespace Gate;
final readonly class Address {
  public function __construct(public string $host, public int $port) {}
  public static function fromEnvironment(array $env): self {
    return new self($env["HOST"] ?? "0.0.0.0", (int) ($env["PORT"] ?? 0));
  }
  public function __toString(): string { return "tcp://{$this->host}:{$this->port}"; }
}
$a = Address::fromEnvironment(getenv());
$s = stream_socket_server((string) $a, $no, $msg);
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, "php server.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an array without what is empty", "php", `-- server.php --
<?php
$config = array_replace(["host" => "127.0.0.1", "port" => 0], array_filter(["host" => getenv("HOST"), "port" => getenv("PORT")]));
["host" => $host, "port" => $port] = $config;
$s = stream_socket_server("tcp://$host:$port");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, "php server.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a constant array that is changed", "php", `-- server.php --
<?php
require __DIR__ . "/src/Config.php";
use Dome\Config;
$config = Config::load();
$s = stream_socket_server("tcp://" . $config["host"] . ":" . $config["port"]);
if ($s === false) { exit(1); }
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
-- src/Config.php --
<?php
namespace Dome;
class Config {
  const DEFAULTS = ["host" => "0.0.0.0", "port" => 0];
  public static function load(): array {
    $c = self::DEFAULTS;
    if (($port = getenv("PORT")) !== false && ctype_digit($port)) {
      $c["port"] = (int) $port;
    }
    if (getenv("APP_ENV") !== "production") {
      $c["host"] = "127.0.0.1";
    }
    return $c;
  }
}
`, "php server.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a script that sets what is missing", "php", `-- composer.json --
{}
-- public/index.php --
<?php echo 1;
-- bin/serve --
#!/bin/sh
set -eu
: "${PORT:=0}"
exec php -S "0.0.0.0:$PORT" -t public
`, "sh bin/serve", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a structure read from a file", "go", "-- main.go --\npackage main\n\nimport \"encoding/json\"; import \"net/http\"; import \"os\"\n\ntype config struct {\n\tAddr string `json:\"addr\"`\n}\n\nfunc main() {\n\tc := config{Addr: \":0\"}\n\tif b, err := os.ReadFile(\"config.json\"); err == nil {\n\t\t_ = json.Unmarshal(b, &c)\n\t}\n\tif err := http.ListenAndServe(c.Addr, nil); err != nil {\n\t\tpanic(err)\n\t}\n}\n-- config.json --\n{\"addr\": \"127.0.0.1:0\"}\n", "go run .", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"variables looked up one by one", "go", `-- main.go --
package main

import "fmt"; import "net/http"; import "os"; import "strings"

const (
	defaultHost = "localhost"
	defaultPort = 0
)

func addr() string {
	host, port := defaultHost, fmt.Sprint(defaultPort)
	if v := strings.TrimSpace(os.Getenv("PORT")); v != "" {
		port = v
	}
	if v, ok := os.LookupEnv("HOST"); ok {
		host = v
	}
	return host + ":" + port
}

func main() {
	mux := http.NewServeMux()
	if err := http.ListenAndServe(addr(), mux); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
`, "go run .", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a variable of the package", "go", `-- main.go --
package main

import "log"; import "net/http"; import "os"

var port = getenv("PORT", "0")

func getenv(key, fallback string) string {
	if value, ok := os.LookupEnv(key); ok && value != "" {
		return value
	}
	return fallback
}

func main() {
	log.Fatal(http.ListenAndServe("0.0.0.0:"+port, http.NotFoundHandler()))
}
`, "go run .", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a default of a flag", "go", `-- main.go --
package main

import "flag"; import "fmt"; import "net"; import "net/http"; import "os"; import "strconv"

func main() {
	def := 0
	if p, err := strconv.Atoi(os.Getenv("PORT")); err == nil {
		def = p
	}
	port := flag.Int("port", def, "port")
	host := flag.String("host", "", "host")
	flag.Parse()
	ln, err := net.Listen("tcp", fmt.Sprintf("%s:%d", *host, *port))
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	http.Serve(ln, nil)
}
`, "go run .", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a structure in a structure", "go", `-- main.go --
package main

import "net/http"; import "os"

type Server struct {
	cfg  Config
	http *http.Server
}

type Config struct {
	Addr string
	Prod bool
}

func New(cfg Config) *Server {
	return &Server{cfg: cfg, http: &http.Server{Addr: cfg.Addr, Handler: http.DefaultServeMux}}
}

func (s *Server) Run() error { return s.http.ListenAndServe() }

func main() {
	cfg := Config{Addr: ":0", Prod: os.Getenv("APP_ENV") == "production"}
	if !cfg.Prod {
		cfg.Addr = "127.0.0.1" + cfg.Addr
	}
	if err := New(cfg).Run(); err != nil {
		panic(err)
	}
}
`, "go run .", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a server that is bound later", "java", `-- Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.net.*;
import java.util.*;
public class Gate {
  private static final Map<String, String> ENV = System.getenv();
  private static int port() {
    String p = ENV.get("PORT");
    if (p == null || p.isBlank()) return 0;
    return Integer.parseInt(p.trim());
  }
  public static void main(String... args) throws Exception {
    HttpServer server = HttpServer.create();
    server.bind(new InetSocketAddress(ENV.getOrDefault("HOST", "0.0.0.0"), port()), 0);
    server.start();
  }
}
`, "java Gate.java", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a file of properties", "java", `-- Gate.java --
import java.io.*;
import java.net.*;
import java.nio.file.*;
import java.util.Properties;
class Gate {
  public static void main(String[] args) throws IOException {
    Properties p = new Properties();
    try (InputStream in = Files.newInputStream(Path.of("gate.properties"))) { p.load(in); }
    int port = Integer.parseInt(System.getProperty("port", p.getProperty("port", "0")));
    try (ServerSocket s = new ServerSocket()) {
      s.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
      while (true) s.accept().close();
    }
  }
}
-- gate.properties --
port=0
`, "java -Dport=0 Gate.java", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a fallback after an error", "java", `-- src/Main.java --
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.concurrent.Executors;

public final class Main {
  private Main() {}

  static int env(String name, int fallback) {
    var value = System.getenv(name);
    try {
      return value == null ? fallback : Integer.parseInt(value);
    } catch (NumberFormatException e) {
      return fallback;
    }
  }

  public static void main(String[] args) throws IOException {
    var server = HttpServer.create(new InetSocketAddress("0.0.0.0", env("PORT", 0)), 0);
    server.setExecutor(Executors.newFixedThreadPool(2));
    server.start();
  }
}
`, "java src/Main.java", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an enumeration with fields", "java", `-- Main.java --
import java.net.*;
import java.util.*;

class Main {
  enum Profile {
    DEV("localhost"), PRODUCTION("0.0.0.0");
    final String host;
    Profile(String host) { this.host = host; }
    static Profile current() {
      return "production".equalsIgnoreCase(System.getenv("APP_ENV")) ? PRODUCTION : DEV;
    }
  }
  public static void main(String[] args) throws Exception {
    int port = args.length > 0 ? Integer.parseInt(args[0]) : 0;
    try (ServerSocket s = new ServerSocket(port, 10, InetAddress.getByName(Profile.current().host))) {
      for (;;) s.accept().close();
    }
  }
}
`, "java Main.java 0", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"what is spread under a condition", "deno", `-- deno.json --
{"tasks":{"start":"deno run -A main.ts"}}
-- main.ts --
const { port, hostname } = { port: 0, hostname: "0.0.0.0", ...(Deno.env.has("PORT") && { port: Number(Deno.env.get("PORT")) }) };
Deno.serve({ port, hostname, onListen() {} }, () => new Response("x"));
`, "deno run -A main.ts", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a socket of Deno", "deno", `-- deno.json --
{}
-- main.ts --
const listener = Deno.listen({ hostname: "127.0.0.1", port: parseInt(Deno.env.get("PORT") || "0") });
for await (const c of listener) c.close();
`, "deno run --allow-all main.ts", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a module of settings", "deno", `-- deno.json --
{"tasks":{"start":"deno run -A server.ts"}}
-- server.ts --
import { config } from "./config.ts";
Deno.serve({ port: config.port, hostname: config.hostname }, (_req) => new Response("x"));
-- config.ts --
const env = (k: string, d: string): string => Deno.env.get(k) || d;
export const config = {
  port: Number(env("PORT", "0")),
  hostname: env("HOST", "0.0.0.0"),
} as const;
`, "deno task start", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a script of the package", "bun", `-- package.json --
{"name":"g","scripts":{"start":"bun src/index.ts"}}
-- src/index.ts --
const server = Bun.serve({
  port: process.env.PORT ?? 0,
  hostname: process.env.NODE_ENV === "production" ? "0.0.0.0" : "localhost",
  routes: { "/": new Response("x") },
  fetch() { return new Response("no", { status: 404 }); },
});
console.log(server.url.href);
`, "bun run start", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an enumeration of TypeScript", "bun", `-- s.ts --
import http from "node:http";
enum Mode { Dev = "development", Prod = "production" }
interface Options { port: number; host?: string }
const mode: Mode = (process.env.NODE_ENV as Mode) ?? Mode.Dev;
const options: Record<Mode, Options> = {
  [Mode.Dev]: { port: 0, host: "localhost" },
  [Mode.Prod]: { port: Number(process.env.PORT!) },
};
const { port, host } = options[mode];
http.createServer().listen(port, host);
`, "bun s.ts", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a helper with a default", "php", `-- s.php --
<?php
function env_or(string $name, ?string $default = null): ?string {
  $v = getenv($name);
  return ($v === false || $v === "") ? $default : $v;
}
$host = env_or("HOST", "0.0.0.0");
$port = (int) env_or("PORT", "0");
$s = stream_socket_server("tcp://{$host}:{$port}");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, "php s.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"settings of sections", "php", `-- s.php --
<?php
$ini = parse_ini_file(__DIR__ . "/app.ini", true);
$port = getenv("PORT") ?: $ini["server"]["port"];
$host = $ini["server"]["host"];
$s = stream_socket_server("tcp://$host:$port");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
-- app.ini --
[server]
host = 0.0.0.0
port = 0
`, "php s.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an enumeration with values", "php", `-- s.php --
<?php
enum Where: string { case Any = "0.0.0.0"; case Here = "127.0.0.1"; }
$w = getenv("HOST") === "127.0.0.1" ? Where::Here : Where::Any;
$s = stream_socket_server("tcp://" . $w->value . ":0");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, "php s.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an address that is split", "php", `-- s.php --
<?php
list($host, $port) = explode(":", getenv("LISTEN") ?: "127.0.0.1:0");
$s = stream_socket_server("tcp://$host:$port");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, "php s.php", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"a default that is changed", "cargo", `-- src/main.rs --
use std::{env, net::TcpListener};
struct Settings { host: String, port: u16 }
impl Default for Settings {
    fn default() -> Self { Settings { host: "127.0.0.1".to_string(), port: 0 } }
}
fn main() {
    let mut s = Settings::default();
    if let Some(p) = env::var("PORT").ok().filter(|p| !p.is_empty()) { s.port = p.parse().unwrap_or(s.port); }
    let l = TcpListener::bind(format!("{}:{}", s.host, s.port)).unwrap();
    for s in l.incoming() { let _ = s; }
}
`, "./target/debug/dome", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
	{"an address from one variable", "cargo", `-- src/main.rs --
use std::net::TcpListener;
fn main() {
    let addr: std::net::SocketAddr = std::env::var("LISTEN").unwrap_or_else(|_| "0.0.0.0:0".to_string()).parse().unwrap();
    let l = TcpListener::bind(addr).unwrap();
    for s in l.incoming() { let _ = s; }
}
`, "./target/debug/dome", []string{"", "PORT=%d HOST=127.0.0.1 NODE_ENV=production APP_ENV=production"}},
}
