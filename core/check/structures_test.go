package check_test

import "testing"

// structures are programs of several files and packages, as compilers, bundlers and workspaces
// leave them; each was run, and what it did was read from the kernel.
var structures = []told{
	{"typescript import star", `-- Procfile --
web: node dist/a.js
-- package.json --
{"name":"a","scripts":{"build":"tsc"}}
-- dist/a.js --
"use strict";
var __createBinding = (this && this.__createBinding) || (Object.create ? (function(o, m, k, k2) {
    if (k2 === undefined) k2 = k;
    var desc = Object.getOwnPropertyDescriptor(m, k);
    if (!desc || ("get" in desc ? !m.__esModule : desc.writable || desc.configurable)) {
      desc = { enumerable: true, get: function() { return m[k]; } };
    }
    Object.defineProperty(o, k2, desc);
}) : (function(o, m, k, k2) {
    if (k2 === undefined) k2 = k;
    o[k2] = m[k];
}));
var __setModuleDefault = (this && this.__setModuleDefault) || (Object.create ? (function(o, v) {
    Object.defineProperty(o, "default", { enumerable: true, value: v });
}) : function(o, v) {
    o["default"] = v;
});
var __importStar = (this && this.__importStar) || (function () {
    var ownKeys = function(o) {
        ownKeys = Object.getOwnPropertyNames || function (o) {
            var ar = [];
            for (var k in o) if (Object.prototype.hasOwnProperty.call(o, k)) ar[ar.length] = k;
            return ar;
        };
        return ownKeys(o);
    };
    return function (mod) {
        if (mod && mod.__esModule) return mod;
        var result = {};
        if (mod != null) for (var k = ownKeys(mod), i = 0; i < k.length; i++) if (k[i] !== "default") __createBinding(result, mod, k[i]);
        __setModuleDefault(result, mod);
        return result;
    };
})();
Object.defineProperty(exports, "__esModule", { value: true });
const http = __importStar(require("http"));
const cfg = __importStar(require("./cfg"));
http.createServer((q, r) => { r.end(); }).listen(cfg.port, cfg.default.host);
-- dist/cfg.js --
"use strict";
Object.defineProperty(exports, "__esModule", { value: true });
exports.port = void 0;
exports.port = process.env.PORT ? parseInt(process.env.PORT, 10) : 6301;
exports.default = { host: "0.0.0.0" };
`, ` => any 6301
PORT=8301 => any 8301`},
	{"babel", `-- Procfile --
web: node build/a.js
-- package.json --
{"name":"a"}
-- build/a.js --
"use strict";
var _http = _interopRequireDefault(require("http"));
var _config = _interopRequireWildcard(require("./config"));
function _getRequireWildcardCache(e) { if ("function" != typeof WeakMap) return null; var r = new WeakMap(), t = new WeakMap(); return (_getRequireWildcardCache = function (e) { return e ? t : r; })(e); }
function _interopRequireWildcard(e, r) { if (!r && e && e.__esModule) return e; if (null === e || "object" != typeof e && "function" != typeof e) return { default: e }; var t = _getRequireWildcardCache(r); if (t && t.has(e)) return t.get(e); var n = { __proto__: null }, a = Object.defineProperty && Object.getOwnPropertyDescriptor; for (var u in e) if ("default" !== u && {}.hasOwnProperty.call(e, u)) { var i = a ? Object.getOwnPropertyDescriptor(e, u) : null; i && (i.get || i.set) ? Object.defineProperty(n, u, i) : n[u] = e[u]; } return n.default = e, t && t.set(e, n), n; }
function _interopRequireDefault(e) { return e && e.__esModule ? e : { default: e }; }
_http.default.createServer((req, res) => res.end()).listen(_config.default, _config.host);
-- build/config.js --
"use strict";
Object.defineProperty(exports, "__esModule", { value: true });
exports.host = exports.default = void 0;
const host = exports.host = '127.0.0.1';
var _default = exports.default = Number(process.env.PORT ?? 6302);
`, ` => loopback 6302
PORT=8302 => loopback 8302`},
	{"rollup cjs", `-- Procfile --
web: node dist/b.cjs
-- package.json --
{"name":"a"}
-- dist/b.cjs --
'use strict';
var node_http = require('node:http');
var fs = require('fs');
function _interopNamespaceDefault(e) {
  var n = Object.create(null);
  if (e) {
    Object.keys(e).forEach(function (k) {
      if (k !== 'default') {
        var d = Object.getOwnPropertyDescriptor(e, k);
        Object.defineProperty(n, k, d.get ? d : { enumerable: true, get: function () { return e[k]; } });
      }
    });
  }
  n.default = e;
  return Object.freeze(n);
}
var fs__namespace = /*#__PURE__*/_interopNamespaceDefault(fs);
const settings = JSON.parse(fs__namespace.readFileSync('settings.json', 'utf8'));
const port = Number(process.env.PORT || settings.port);
node_http.createServer((q, r) => r.end()).listen(port);
-- settings.json --
{"port": 6303}
`, ` => any 6303
PORT=8303 => any 8303`},
	{"webpack style", `-- Procfile --
web: node dist/main.js
-- package.json --
{"name":"a"}
-- dist/main.js --
/******/ (() => { // webpackBootstrap
/******/ 	"use strict";
/******/ 	var __webpack_modules__ = ({
/***/ "./src/config.js":
/***/ ((__unused_webpack_module, __webpack_exports__, __webpack_require__) => {
__webpack_require__.r(__webpack_exports__);
/* harmony export */ __webpack_require__.d(__webpack_exports__, {
/* harmony export */   port: () => (/* binding */ port)
/* harmony export */ });
const port = Number(process.env.PORT) || 6304;
/***/ }),
/***/ "http":
/***/ ((module) => {
module.exports = require("http");
/***/ })
/******/ 	});
/******/ 	var __webpack_module_cache__ = {};
/******/ 	function __webpack_require__(moduleId) {
/******/ 		var cachedModule = __webpack_module_cache__[moduleId];
/******/ 		if (cachedModule !== undefined) {
/******/ 			return cachedModule.exports;
/******/ 		}
/******/ 		var module = __webpack_module_cache__[moduleId] = {
/******/ 			exports: {}
/******/ 		};
/******/ 		__webpack_modules__[moduleId](module, module.exports, __webpack_require__);
/******/ 		return module.exports;
/******/ 	}
/******/ 	/* webpack/runtime/compat get default export */
/******/ 	(() => {
/******/ 		__webpack_require__.n = (module) => {
/******/ 			var getter = module && module.__esModule ?
/******/ 				() => (module['default']) :
/******/ 				() => (module);
/******/ 			__webpack_require__.d(getter, { a: getter });
/******/ 			return getter;
/******/ 		};
/******/ 	})();
/******/ 	(() => {
/******/ 		__webpack_require__.d = (exports, definition) => {
/******/ 			for(var key in definition) {
/******/ 				if(__webpack_require__.o(definition, key) && !__webpack_require__.o(exports, key)) {
/******/ 					Object.defineProperty(exports, key, { enumerable: true, get: definition[key] });
/******/ 				}
/******/ 			}
/******/ 		};
/******/ 	})();
/******/ 	(() => {
/******/ 		__webpack_require__.o = (obj, prop) => (Object.prototype.hasOwnProperty.call(obj, prop))
/******/ 	})();
/******/ 	(() => {
/******/ 		__webpack_require__.r = (exports) => {
/******/ 			if(typeof Symbol !== 'undefined' && Symbol.toStringTag) {
/******/ 				Object.defineProperty(exports, Symbol.toStringTag, { value: 'Module' });
/******/ 			}
/******/ 			Object.defineProperty(exports, '__esModule', { value: true });
/******/ 		};
/******/ 	})();
var __webpack_exports__ = {};
__webpack_require__.r(__webpack_exports__);
var http__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__("http");
var http__WEBPACK_IMPORTED_MODULE_0___default = /*#__PURE__*/__webpack_require__.n(http__WEBPACK_IMPORTED_MODULE_0__);
var _config__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__("./src/config.js");
http__WEBPACK_IMPORTED_MODULE_0___default().createServer((q, r) => r.end()).listen(_config__WEBPACK_IMPORTED_MODULE_1__.port, "0.0.0.0");
/******/ })()
;
`, ` => any 6304
PORT=8304 => any 8304`},
	{"replace to a folder below", `-- Procfile --
web: ./bin/app
-- go.mod --
module dome/app

go 1.22

require dome/env v1.2.0

replace dome/env => ./third/env
-- main.go --
package main

import (
	"net/http"

	"dome/env"
)

func main() { http.ListenAndServe(env.Addr(), nil) }
-- third/env/go.mod --
module dome/env

go 1.22
-- third/env/env.go --
package env

import "os"

func Addr() string {
	if p := os.Getenv("PORT"); p != "" {
		return ":" + p
	}
	return "127.0.0.1:6401"
}
`, ` => loopback 6401
PORT=8401 => any 8401`},
	{"nested module with longer path", `-- Procfile --
web: ./bin/app
-- go.mod --
module dome/app

go 1.22

require dome/app/lib v0.0.0

replace dome/app/lib => ./other
-- main.go --
package main

import (
	"dome/app/lib"
	"net/http"
)

func main() { http.ListenAndServe(lib.Addr, nil) }
-- other/go.mod --
module dome/app/lib

go 1.22
-- other/lib.go --
package lib

const Addr = "0.0.0.0:6402"
`, ` => any 6402`},
	{"puma stages by variable", `-- Procfile --
web: puma
-- config/puma/production.rb --
port ENV.fetch('PORT', 6501)
-- config/puma/staging.rb --
bind 'tcp://127.0.0.1:6502'
-- config/puma.rb --
bind 'tcp://127.0.0.1:6503'
-- config.ru --
run proc { |env| [200, {}, ['x']] }
`, ` => loopback 6503
RACK_ENV=production => any 6501
RACK_ENV=staging => loopback 6502
APP_ENV=staging RACK_ENV=production PORT=8501 => loopback 6502`},
	{"puma stages alone", `-- Procfile --
web: puma -e staging
-- config/puma/production.rb --
port 6504
-- config.ru --
run proc { |env| [200, {}, ['x']] }
`, ` => any 9292
PORT=8504 => any 9292`},
	{"named file beats stages", `-- Procfile --
web: puma -C config/other.rb -e production
-- config/puma/production.rb --
port 6505
-- config/other.rb --
bind 'tcp://127.0.0.1:6506'
-- config.ru --
run proc { |env| [200, {}, ['x']] }
`, ` => loopback 6506`},
	{"subpath imports and exports map", `-- Procfile --
web: node server/index.js
-- package.json --
{"name":"dome","type":"module","imports":{"#config":"./server/config.js","#lib/*":"./lib/*.js"},"workspaces":["packages/*"],"dependencies":{"@dome/settings":"*"}}
-- packages/settings/package.json --
{"name":"@dome/settings","version":"1.0.0","type":"module","exports":{".":"./src/main.js","./defaults":"./src/defaults.js"}}
-- packages/settings/src/main.js --
export const pick = (name, fallback) => process.env[name] ?? fallback;
-- packages/settings/src/defaults.js --
export default { port: 6201, host: '0.0.0.0' };
-- lib/start.js --
import http from 'node:http';
export const start = ({ port, host }) => http.createServer((q, r) => r.end()).listen(port, host);
-- server/config.js --
import { pick } from '@dome/settings';
import defaults from '@dome/settings/defaults';
export const config = { ...defaults, port: Number(pick('PORT', defaults.port)) };
-- server/index.js --
import { config } from '#config';
import { start } from '#lib/start';
start(config);
`, ` => any 6201
PORT=8201 => any 8201`},
	{"npm package config variable", `-- Procfile --
web: npm start --silent
-- package.json --
{"name":"a","version":"1.0.0","config":{"port":"6203"},"scripts":{"start":"node index.js"}}
-- index.js --
const port = process.env.PORT || process.env.npm_package_config_port;
require('http').createServer((q, r) => r.end()).listen(port);
`, ` => any 6203
PORT=8203 => any 8203`},
	{"compiled typescript in dist with helpers", `-- Procfile --
web: node dist/index.js
-- package.json --
{"name":"a","scripts":{"build":"tsc"},"dependencies":{"express":"^4"}}
-- dist/config.js --
"use strict";
var __assign = (this && this.__assign) || function () {
    __assign = Object.assign || function(t) {
        for (var s, i = 1, n = arguments.length; i < n; i++) {
            s = arguments[i];
            for (var p in s) if (Object.prototype.hasOwnProperty.call(s, p)) t[p] = s[p];
        }
        return t;
    };
    return __assign.apply(this, arguments);
};
Object.defineProperty(exports, "__esModule", { value: true });
exports.config = void 0;
var base = { host: "0.0.0.0", port: 6205 };
exports.config = __assign(__assign({}, base), (process.env.PORT ? { port: Number(process.env.PORT) } : {}));
-- dist/index.js --
"use strict";
var __importDefault = (this && this.__importDefault) || function (mod) {
    return (mod && mod.__esModule) ? mod : { "default": mod };
};
var __awaiter = (this && this.__awaiter) || function (thisArg, _arguments, P, generator) {
    function adopt(value) { return value instanceof P ? value : new P(function (resolve) { resolve(value); }); }
    return new (P || (P = Promise))(function (resolve, reject) {
        function fulfilled(value) { try { step(generator.next(value)); } catch (e) { reject(e); } }
        function rejected(value) { try { step(generator["throw"](value)); } catch (e) { reject(e); } }
        function step(result) { result.done ? resolve(result.value) : adopt(result.value).then(fulfilled, rejected); }
        step((generator = generator.apply(thisArg, _arguments || [])).next());
    });
};
Object.defineProperty(exports, "__esModule", { value: true });
const express_1 = __importDefault(require("express"));
const config_1 = require("./config");
function main() {
    return __awaiter(this, void 0, void 0, function* () {
        const app = (0, express_1.default)();
        app.get("/", (_req, res) => { res.send("ok"); });
        yield new Promise((resolve) => setTimeout(resolve, 10));
        app.listen(config_1.config.port, config_1.config.host);
    });
}
main();
`, ` => any 6205
PORT=8205 => any 8205`},
	{"esbuild bundle style", `-- Procfile --
web: node out/server.cjs
-- package.json --
{"name":"a"}
-- out/server.cjs --
"use strict";
var __create = Object.create;
var __defProp = Object.defineProperty;
var __getOwnPropDesc = Object.getOwnPropertyDescriptor;
var __getOwnPropNames = Object.getOwnPropertyNames;
var __getProtoOf = Object.getPrototypeOf;
var __hasOwnProp = Object.prototype.hasOwnProperty;
var __esm = (fn, res) => function __init() {
  return fn && (res = (0, fn[__getOwnPropNames(fn)[0]])(fn = 0)), res;
};
var __copyProps = (to, from, except, desc) => {
  if (from && typeof from === "object" || typeof from === "function") {
    for (let key of __getOwnPropNames(from))
      if (!__hasOwnProp.call(to, key) && key !== except)
        __defProp(to, key, { get: () => from[key], enumerable: !(desc = __getOwnPropDesc(from, key)) || desc.enumerable });
  }
  return to;
};
var __toESM = (mod, isNodeMode, target) => (target = mod != null ? __create(__getProtoOf(mod)) : {}, __copyProps(
  isNodeMode || !mod || !mod.__esModule ? __defProp(target, "default", { value: mod, enumerable: true }) : target,
  mod
));

// src/config.ts
var settings;
var init_config = __esm({
  "src/config.ts"() {
    settings = { port: Number(process.env.PORT || 6206), host: "127.0.0.1" };
  }
});

// src/server.ts
var import_node_http = __toESM(require("node:http"), 1);
init_config();
import_node_http.default.createServer((q, r) => r.end()).listen(settings.port, settings.host);
`, ` => loopback 6206
PORT=8206 => loopback 8206`},
	{"go work with two modules", `-- Procfile --
web: ./bin/app
-- go.work --
go 1.22

use (
	./app
	./lib
)
-- app/go.mod --
module dome/app

go 1.22

require dome/lib v0.0.0
-- app/main.go --
package main

import (
	"log"
	"net/http"

	"dome/lib/env"
)

func main() {
	log.Fatal(http.ListenAndServe(env.Addr("0.0.0.0", "6221"), nil))
}
-- lib/go.mod --
module dome/lib

go 1.22
-- lib/env/env.go --
package env

import (
	"net"
	"os"
)

// Addr is where to listen.
func Addr(host, port string) string {
	for _, name := range [...]string{"PORT", "HTTP_PORT"} {
		if v, ok := os.LookupEnv(name); ok && v != "" {
			port = v
			break
		}
	}
	return net.JoinHostPort(host, port)
}
`, ` => any 6221
PORT=8221 => any 8221`},
	{"puma with clustered config and rack env file", `-- Procfile --
web: puma -e production config.ru
-- config/puma/production.rb --
bind "tcp://0.0.0.0:#{ENV.fetch('PORT', 6232)}"
threads 1, 1
-- config/puma.rb --
bind 'tcp://127.0.0.1:5232'
-- config.ru --
app = proc { |env| [200, { 'Content-Type' => 'text/plain' }, ['x']] }
run app
`, ` => any 6232
PORT=8232 => any 8232`},
	{"php psr4 by hand", `-- Procfile --
web: php public/serve.php
-- vendor/autoload.php --
<?php
spl_autoload_register(function (string $class): void {
    $prefix = 'Dome\\';
    if (!str_starts_with($class, $prefix)) return;
    require __DIR__ . '/../src/' . str_replace('\\', '/', substr($class, strlen($prefix))) . '.php';
});
-- src/Env.php --
<?php
namespace Dome;
enum Env: string
{
    case Port = 'APP_PORT';
    case Host = 'APP_HOST';
    public function or(string $default): string
    {
        $v = getenv($this->value);
        return $v === false ? $default : $v;
    }
}
-- src/Http/Server.php --
<?php
namespace Dome\Http;
use Dome\Env;
class Server
{
    public function __construct(private string $address = '') {
        $this->address = sprintf('tcp://%s:%s', Env::Host->or('127.0.0.1'), Env::Port->or('6241'));
    }
    public function run(): never
    {
        $s = stream_socket_server($this->address);
        while (true) { if ($c = @stream_socket_accept($s, 60)) fclose($c); }
    }
}
-- public/serve.php --
<?php
require __DIR__ . '/../vendor/autoload.php';
(new Dome\Http\Server())->run();
`, ` => loopback 6241
APP_PORT=8241 => loopback 8241`},
	{"require of a folder and NODE_PATH", `-- Procfile --
web: NODE_PATH=lib node server
-- package.json --
{"name":"a"}
-- lib/settings/index.js --
exports.port = process.env.PORT || 6602;
-- server/index.js --
const { port } = require('settings');
require('http').createServer((q, r) => r.end()).listen(port, '127.0.0.1');
`, ` => loopback 6602
PORT=8602 => loopback 8602`},
	{"async iterator and abort", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module"}
-- a.mjs --
import { createServer } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
async function* settings() { yield ['port', 6605]; await sleep(5); if (process.env.PORT) yield ['port', +process.env.PORT]; yield ['host', '127.0.0.1']; }
const conf = {};
for await (const [k, v] of settings()) conf[k] = v;
const ac = new AbortController();
createServer((q, r) => r.end()).listen({ ...conf, signal: ac.signal });
`, ` => loopback 6605
PORT=8605 => loopback 8605`},
	{"class with private static block", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module"}
-- a.mjs --
import http from 'node:http';
class Settings {
  static #instance;
  #values = new Map();
  static { this.#instance = new this(); }
  constructor() { for (const [k, v] of Object.entries({ PORT: '6606', HOST: '0.0.0.0' })) this.#values.set(k, process.env[k] || v); }
  static get current() { return this.#instance; }
  get(name) { return this.#values.get(name); }
}
const s = Settings.current;
http.createServer((q, r) => r.end()).listen(parseInt(s.get('PORT')), s.get('HOST'));
`, ` => any 6606
PORT=8606 => any 8606`},
	{"tagged template and label", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const tag = (strings, ...values) => strings.raw.reduce((a, s, i) => a + s + (values[i] ?? ''), '');
const address = tag` + "`" + `${'127.0.0.1'}:${process.env.PORT || 6607}` + "`" + `;
const [host, port] = address.split(':');
let done = false;
outer: for (let i = 0; ; i++) { for (;;) { if (i > 2) break outer; continue outer; } }
if (!done) require('http').createServer((q, r) => r.end()).listen(+port, host);
`, ` => loopback 6607
PORT=8607 => loopback 8607`},
	{"pkgutil plugins", `-- Procfile --
web: python3 main.py
-- main.py --
import importlib
import os
import pkgutil

import plugins

found = {name: importlib.import_module(f"plugins.{name}") for _, name, _ in pkgutil.iter_modules(plugins.__path__)}
found[os.environ.get("SERVER", "first")].serve()
-- plugins/__init__.py --
-- plugins/first.py --
from http.server import HTTPServer, BaseHTTPRequestHandler


def serve():
    HTTPServer(("127.0.0.1", 6612), BaseHTTPRequestHandler).serve_forever()
-- plugins/second.py --
import socketserver


def serve():
    socketserver.TCPServer(("", 6712), socketserver.BaseRequestHandler).serve_forever()
`, ` => loopback 6612
SERVER=second => any 6712`},
	{"dsl with instance_eval", `-- Procfile --
web: ruby app.rb
-- config.rb --
port ENV.fetch('PORT', '6621').to_i
host '0.0.0.0'
-- app.rb --
require 'webrick'
class Settings
  def initialize = @values = {}
  def self.load(file)
    s = new
    s.instance_eval(File.read(file), file)
    s
  end
  %i[port host].each do |name|
    define_method(name) do |value = nil|
      value.nil? ? @values[name] : @values[name] = value
    end
  end
end
s = Settings.load(File.expand_path('config.rb', __dir__))
WEBrick::HTTPServer.new(Port: s.port, BindAddress: s.host).start
`, ` => any 6621
PORT=8621 => any 8621`},
	{"method missing and open struct", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'ostruct'
require 'socket'
class Env
  def initialize(prefix) = @prefix = prefix
  def method_missing(name, default = nil, *) = ENV["#{@prefix}_#{name.upcase}"] || default
  def respond_to_missing?(*) = true
end
e = Env.new('SKY')
conf = OpenStruct.new(port: e.port(6622).to_i, host: e.host('127.0.0.1'))
s = TCPServer.new(conf.host, conf.port)
loop { s.accept.close }
`, ` => loopback 6622
SKY_PORT=8622 => loopback 8622`},
	{"reflect struct tags", `-- Procfile --
web: ./app
-- go.mod --
module app

go 1.22
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
	"reflect"
	"strconv"
)

type config struct {
	Host string ` + "`" + `env:"HTTP_HOST" default:""` + "`" + `
	Port int    ` + "`" + `env:"HTTP_PORT" default:"6631"` + "`" + `
}

func load(c any) error {
	v := reflect.ValueOf(c).Elem()
	t := v.Type()
	for i := 0; i < t.NumField(); i++ {
		f := t.Field(i)
		raw, ok := os.LookupEnv(f.Tag.Get("env"))
		if !ok {
			raw = f.Tag.Get("default")
		}
		switch f.Type.Kind() {
		case reflect.String:
			v.Field(i).SetString(raw)
		case reflect.Int:
			n, err := strconv.Atoi(raw)
			if err != nil {
				return fmt.Errorf("%s: %w", f.Name, err)
			}
			v.Field(i).SetInt(int64(n))
		}
	}
	return nil
}

func main() {
	var c config
	if err := load(&c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", c.Host, c.Port), nil))
}
`, ` => any 6631
HTTP_PORT=8631 => any 8631
HTTP_HOST=127.0.0.1 => loopback 6631`},
	{"resource bundle and switch", `-- Procfile --
web: java -cp out app.Main
-- build.sh exec --
#!/bin/sh
mkdir -p out && javac -d out src/app/*.java && cp src/*.properties out/
-- src/server.properties --
port=6651
-- src/app/Main.java --
package app;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.ResourceBundle;

public class Main {
    enum Stage { DEV, LIVE }

    sealed interface Bind permits Any, Local {}
    record Any(int port) implements Bind {}
    record Local(int port) implements Bind {}

    static Bind bind(Stage stage, int port) {
        return switch (stage) {
            case DEV -> new Local(port);
            case LIVE -> {
                int p = port + 1000;
                yield new Any(p);
            }
        };
    }

    public static void main(String[] args) throws Exception {
        int port = Integer.parseInt(ResourceBundle.getBundle("server").getString("port"));
        String name = System.getenv("STAGE");
        Bind b = bind(name == null ? Stage.DEV : Stage.valueOf(name), port);
        ServerSocket s;
        if (b instanceof Any a) {
            s = new ServerSocket(a.port());
        } else {
            s = new ServerSocket(((Local) b).port(), 0, InetAddress.getLoopbackAddress());
        }
        while (!s.isClosed()) s.accept().close();
    }
}
`, ` => loopback 6651
STAGE=LIVE => any 7651`},
	{"socketserver with config class from json or env", `-- Procfile --
web: python3 bin/serve --config etc/serve.json
-- bin/serve exec --
#!/usr/bin/env python3
import os
import sys

sys.path.insert(0, os.path.join(os.path.dirname(os.path.abspath(__file__)), "..", "lib"))

from serve import cli

if __name__ == "__main__":
    sys.exit(cli.main(sys.argv[1:]))
-- lib/serve/__init__.py --
-- lib/serve/cli.py --
import argparse
import json
import logging
import os

from .server import serve

log = logging.getLogger(__name__)


def parse(argv):
    p = argparse.ArgumentParser(prog="serve")
    p.add_argument("-c", "--config", metavar="FILE", type=argparse.FileType("r"))
    p.add_argument("-v", "--verbose", action="count", default=0)
    return p.parse_args(argv)


def main(argv=None):
    args = parse(argv)
    logging.basicConfig(level=logging.DEBUG if args.verbose > 1 else logging.INFO)
    conf = {"host": "", "port": 5714}
    if args.config:
        conf.update(json.load(args.config))
    for key in list(conf):
        name = f"SERVE_{key.upper()}"
        if name in os.environ:
            conf[key] = type(conf[key])(os.environ[name])
    log.info("serving on %(host)s:%(port)d", conf)
    serve(**conf)
    return 0
-- lib/serve/server.py --
import socketserver


class Handler(socketserver.BaseRequestHandler):
    def handle(self):
        self.request.sendall(b"x")


def serve(host, port):
    socketserver.ThreadingTCPServer.allow_reuse_address = True
    with socketserver.ThreadingTCPServer((host, port), Handler) as server:
        server.serve_forever()
-- etc/serve.json --
{"port": 6714}
`, ` => any 6714
SERVE_PORT=8714 => any 8714`},
	{"layered java server", `-- Procfile --
web: java -cp build/classes dome.gate.Application
-- build.sh exec --
#!/bin/sh
mkdir -p build/classes && javac -d build/classes $(find src/main/java -name '*.java')
-- src/main/java/dome/gate/Application.java --
package dome.gate;

import dome.gate.config.AppConfig;
import dome.gate.config.ConfigLoader;
import dome.gate.http.GateServer;
import java.util.logging.Level;
import java.util.logging.Logger;

public class Application {
    private static final Logger LOG = Logger.getLogger(Application.class.getName());

    public static void main(String[] args) {
        AppConfig config = new ConfigLoader().load();
        GateServer server = new GateServer(config);
        Runtime.getRuntime().addShutdownHook(new Thread(server::stop));
        try {
            server.start();
            LOG.log(Level.INFO, "listening on {0}", config.getPort());
        } catch (Exception e) {
            LOG.log(Level.SEVERE, "could not start", e);
            System.exit(1);
        }
    }
}
-- src/main/java/dome/gate/config/AppConfig.java --
package dome.gate.config;

public class AppConfig {
    private final String host;
    private final int port;
    private final int threads;

    private AppConfig(Builder b) {
        this.host = b.host;
        this.port = b.port;
        this.threads = b.threads;
    }

    public String getHost() { return host; }
    public int getPort() { return port; }
    public int getThreads() { return threads; }

    public static Builder builder() { return new Builder(); }

    public static class Builder {
        private String host = "0.0.0.0";
        private int port = 6741;
        private int threads = 4;

        public Builder host(String host) { this.host = host; return this; }
        public Builder port(int port) { this.port = port; return this; }
        public Builder threads(int threads) { this.threads = threads; return this; }
        public AppConfig build() { return new AppConfig(this); }
    }
}
-- src/main/java/dome/gate/config/ConfigLoader.java --
package dome.gate.config;

import java.util.Optional;

public class ConfigLoader {
    private static final String PREFIX = "GATE_";

    public AppConfig load() {
        AppConfig.Builder builder = AppConfig.builder();
        read("HOST").ifPresent(builder::host);
        read("PORT").map(Integer::parseInt).ifPresent(builder::port);
        read("THREADS").map(Integer::parseInt).filter(n -> n > 0).ifPresent(builder::threads);
        return builder.build();
    }

    private Optional<String> read(String key) {
        return Optional.ofNullable(System.getenv(PREFIX + key)).map(String::trim).filter(s -> !s.isEmpty());
    }
}
-- src/main/java/dome/gate/http/GateServer.java --
package dome.gate.http;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dome.gate.config.AppConfig;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

public class GateServer {
    private final HttpServer server;
    private final ExecutorService pool;

    public GateServer(AppConfig config) {
        try {
            this.server = HttpServer.create(new InetSocketAddress(config.getHost(), config.getPort()), 0);
        } catch (IOException e) {
            throw new IllegalStateException("no socket", e);
        }
        this.pool = Executors.newFixedThreadPool(config.getThreads());
        server.setExecutor(pool);
        server.createContext("/", this::root);
    }

    private void root(HttpExchange ex) throws IOException {
        try (ex) {
            ex.sendResponseHeaders(204, -1);
        }
    }

    public void start() { server.start(); }

    public void stop() {
        server.stop(1);
        pool.shutdown();
    }
}
`, ` => any 6741
GATE_PORT=8741 => any 8741
GATE_PORT=8741 GATE_HOST=127.0.0.1 => loopback 8741`},
	{"npm start through a shell script in scripts", `-- Procfile --
web: npm run -s start
-- package.json --
{"name":"a","scripts":{"start":"./scripts/start.sh"}}
-- scripts/start.sh exec --
#!/bin/sh
cd "$(dirname "$0")/.." || exit 1
export NODE_ENV="${NODE_ENV:-production}"
exec node ./src/index.js "$@"
-- src/index.js --
const port = process.env.NODE_ENV === 'production' ? process.env.PORT || 7602 : 5602;
require('http').createServer((q, r) => r.end()).listen(port, '0.0.0.0');
`, ` => any 7602
PORT=9202 => any 9202`},
	{"java with env options", `-- Procfile --
web: JAVA_OPTS="-Dport=7610" sh -c 'exec java $JAVA_OPTS Main.java'
-- Main.java --
public class Main {
    public static void main(String[] a) throws Exception {
        var s = new java.net.ServerSocket(Integer.getInteger("port", 5610));
        while (true) s.accept().close();
    }
}
`, ` => any 7610
PORT=9210 => any 7610`},
	{"python zipapp style module folder", `-- Procfile --
web: python3 app
-- app/__main__.py --
import os
import sys
from http.server import test, SimpleHTTPRequestHandler
from settings import PORT

sys.exit(test(HandlerClass=SimpleHTTPRequestHandler, port=PORT, bind="127.0.0.1"))
-- app/settings.py --
import os
PORT = int(os.environ.get("PORT", "7615"))
`, ` => loopback 7615
PORT=9215 => loopback 9215`},
	{"esbuild iife cjs with namespace and lazy init", `-- Procfile --
web: node dist/index.cjs
-- package.json --
{"name":"a","scripts":{"build":"esbuild"}}
-- dist/index.cjs --
"use strict";
var __defProp = Object.defineProperty;
var __getOwnPropDesc = Object.getOwnPropertyDescriptor;
var __getOwnPropNames = Object.getOwnPropertyNames;
var __hasOwnProp = Object.prototype.hasOwnProperty;
var __export = (target, all) => {
  for (var name in all)
    __defProp(target, name, { get: all[name], enumerable: true });
};
var __copyProps = (to, from, except, desc) => {
  if (from && typeof from === "object" || typeof from === "function") {
    for (let key of __getOwnPropNames(from))
      if (!__hasOwnProp.call(to, key) && key !== except)
        __defProp(to, key, { get: () => from[key], enumerable: !(desc = __getOwnPropDesc(from, key)) || desc.enumerable });
  }
  return to;
};
var __toCommonJS = (mod) => __copyProps(__defProp({}, "__esModule", { value: true }), mod);

// src/index.ts
var src_exports = {};
__export(src_exports, { start: () => start });
module.exports = __toCommonJS(src_exports);
var import_http = require("http");

// src/env.ts
function env(name, fallback) {
  var _a;
  return (_a = process.env[name]) != null ? _a : fallback;
}

// src/index.ts
function start() {
  return (0, import_http.createServer)((q, r) => r.end()).listen(Number(env("PORT", "7622")), "0.0.0.0");
}
if (require.main === module) start();
`, ` => any 7622
PORT=9222 => any 9222`},
	{"babel async generator regenerator free", `-- Procfile --
web: node build/server.js
-- package.json --
{"name":"a"}
-- build/server.js --
"use strict";
function asyncGeneratorStep(n, t, e, r, o, a, c) { try { var i = n[a](c), u = i.value; } catch (n) { return void e(n); } i.done ? t(u) : Promise.resolve(u).then(r, o); }
function _asyncToGenerator(n) { return function () { var t = this, e = arguments; return new Promise(function (r, o) { var a = n.apply(t, e); function _next(n) { asyncGeneratorStep(a, r, o, _next, _throw, "next", n); } function _throw(n) { asyncGeneratorStep(a, r, o, _next, _throw, "throw", n); } _next(void 0); }); }; }
var http = require("http");
function config() { return _config.apply(this, arguments); }
function _config() {
  _config = _asyncToGenerator(function* () {
    var port = yield Promise.resolve(process.env.PORT || 7623);
    return { port: port, host: '127.0.0.1' };
  });
  return _config.apply(this, arguments);
}
config().then(function (c) {
  http.createServer(function (q, r) { r.end(); }).listen(c.port, c.host);
});
`, ` => loopback 7623
PORT=9223 => loopback 9223`},
	{"ruby zeitwerk free autoload and yaml", `-- Procfile --
web: bundle exec ruby exe/star serve
-- Gemfile --
source 'https://rubygems.org'
gem 'webrick'
-- exe/star exec --
#!/usr/bin/env ruby
$:.unshift(File.join(__dir__, '..', 'lib'))
require 'star'
Star::CLI.start(ARGV)
-- lib/star.rb --
require 'yaml'
module Star
  ROOT = File.expand_path('..', __dir__)
  def self.env = ENV.fetch('STAR_ENV', 'local')
  def self.config
    @config ||= YAML.safe_load_file(File.join(ROOT, 'star.yml'), symbolize_names: true).fetch(env.to_sym)
  end
end
require 'star/cli'
-- lib/star/cli.rb --
module Star
  module CLI
    COMMANDS = { 'serve' => :serve, 'help' => :help }.freeze
    class << self
      def start(argv)
        command = COMMANDS.fetch(argv.first) { :help }
        send(command, *argv.drop(1))
      end

      private

      def serve
        require 'webrick'
        WEBrick::HTTPServer.new(Port: Star.config[:port], BindAddress: Star.config.fetch(:host, '127.0.0.1')).start
      end

      def help = puts('star serve')
    end
  end
end
-- star.yml --
local:
  port: 7626
live:
  port: 8626
  host: 0.0.0.0
`, ` => loopback 7626
STAR_ENV=live => any 8626`},
	{"fastify env plugin", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"fastify":"^5","@fastify/env":"^5"}}
-- app.js --
const fastify = require('fastify')();
const schema = { type: 'object', required: ['HOST'], properties: { PORT: { type: 'number', default: 7901 }, HOST: { type: 'string', default: '0.0.0.0' } } };
fastify.register(require('@fastify/env'), { schema, dotenv: false }).after((err) => { if (err) { console.error(err); process.exit(1); } });
fastify.get('/', async () => 'x');
fastify.ready().then(() => fastify.listen({ port: fastify.config.PORT, host: fastify.config.HOST }));
`, ` => any 7901
PORT=9601 => any 9601
PORT=x => exits`},
	{"rack handler get by name", `-- Procfile --
web: ruby handler.rb
-- handler.rb --
require 'rack'
name = ENV.fetch('SERVER', 'webrick')
Rack::Handler.get(name).run(->(env) { [200, {}, ['x']] }, Host: '127.0.0.1', Port: Integer(ENV['PORT'] || 7922))
`, ` => loopback 7922
SERVER=webrick PORT=9622 => loopback 9622`},
}

func TestStructures(t *testing.T) {
	t.Parallel()
	agree(t, structures)
}
