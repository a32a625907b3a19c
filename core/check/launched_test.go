package check_test

import "testing"

// launchedPrograms start another program, which listens, or make and a shell script put it
// together: what each did in the environments beside it was read from the kernel.
var launchedPrograms = []struct{ name, tree, want string }{
	{"the folder above the script", `-- Procfile --
web: sh bin/start.sh
-- bin/start.sh --
#!/bin/sh
ROOT=$(cd "$(dirname "$0")/.." && pwd -P)
. "$ROOT/conf/app.env"
cd "$ROOT/web" || exit 1
exec python3 -m http.server "$PORT" --directory "$ROOT/web"
-- conf/app.env --
PORT=8331
-- web/index.html --
x
`, ` => any 8331`},
	{"two dirnames and a program by its path", `-- Procfile --
web: bash ops/bin/run.sh
-- ops/bin/run.sh --
#!/usr/bin/env bash
HERE="$(dirname "$(dirname "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")")")"
source "$HERE/ops/lib.sh"
exec python3 "$HERE/app.py" "$(port_of)"
-- ops/lib.sh --
port_of() { echo "${PORT:-8332}"; }
-- app.py --
import sys, http.server
http.server.HTTPServer(("", int(sys.argv[1])), None).serve_forever()
`, ` => any 8332
PORT=5501 => any 5501`},
	{"a config file by a variable through cd", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/sh
BASE=${0%/*}
CONF="$BASE/conf.json"
export CONF
cd "$BASE"
exec node app.js
-- conf.json --
{"port": 8333}
-- app.js --
require('http').createServer().listen(require('path').resolve(process.env.CONF) && JSON.parse(require('fs').readFileSync(process.env.CONF)).port);
`, ` => any 8333`},
	{"pwd and a subfolder", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/bash
set -e
APP_DIR=$(pwd)/service
ENV_FILE="$APP_DIR/env.${ENVIRONMENT:-local}"
if [ -f "$ENV_FILE" ]; then
  set -o allexport
  source "$ENV_FILE"
  set +o allexport
fi
exec node "$APP_DIR/main.js"
-- service/env.local --
PORT=8334
-- service/env.live --
PORT=8335
HOST=0.0.0.0
-- service/main.js --
require('http').createServer().listen(process.env.PORT, process.env.HOST || '127.0.0.1');
`, ` => loopback 8334
ENVIRONMENT=live => any 8335`},
	{"a flag of a variable, unset vanishes", `-- Procfile --
web: java $JAVA_OPTS -cp out $APP_FLAGS Main $APP_ARGS
-- Main.java --
import java.net.*;
public class Main {
  public static void main(String[] a) throws Exception {
    int port = a.length > 0 ? Integer.parseInt(a[0].substring("--port=".length())) : Integer.getInteger("p", 8340);
    new ServerSocket(port, 5, InetAddress.getByName(System.getProperty("host", "0.0.0.0"))).accept();
  }
}
`, ` => any 8340
JAVA_OPTS=-Dp=8341 => any 8341
APP_ARGS=--port=8343 => any 8343`},
	{"a property set by the program", `-- Procfile --
web: java -Dport.base=8400 -cp out Main
-- Main.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
public class Main {
  public static void main(String[] a) throws Exception {
    String p = System.getenv("PORT");
    if (p != null) System.setProperty("http.port", p);
    if (System.getProperty("http.port") == null) System.getProperties().put("ignored", "x");
    int port = Integer.getInteger("http.port", Integer.getInteger("port.base") + 1);
    String old = System.setProperty("http.port", "1");
    System.clearProperty("http.port");
    port += System.getProperty("http.port") == null ? 0 : 1000;
    HttpServer.create(new InetSocketAddress(port), 0).start();
  }
}
`, ` => any 8401
PORT=5511 => any 5511`},
	{"properties with defaults of the machine", `-- Procfile --
web: java -Dserver.port=8402 -cp out Main
-- Main.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.*;
public class Main {
  public static void main(String[] a) throws Exception {
    Properties base = new Properties();
    base.setProperty("server.port", "8403");
    base.setProperty("server.host", "127.0.0.1");
    Properties p = new Properties(base);
    p.putAll(System.getProperties());
    for (String k : p.stringPropertyNames()) if (k.startsWith("server.")) System.out.println(k);
    HttpServer.create(new InetSocketAddress(p.getProperty("server.host"), Integer.parseInt(p.getProperty("server.port"))), 0).start();
  }
}
`, ` => loopback 8402`},
	{"python execvp of gunicorn", `-- Procfile --
web: python run.py
-- run.py --
import os
port = os.environ.get("PORT", "8501")
os.execvp("gunicorn", ["gunicorn", "--bind", f"0.0.0.0:{port}", "app:app"])
-- app.py --
def app(e, s):
    s("200 OK", [])
    return [b"x"]
-- requirements.txt --
gunicorn
`, ` => any 8501
PORT=5601 => any 5601`},
	{"python subprocess run", `-- Procfile --
web: python manage.py
-- manage.py --
import os, subprocess, sys
cmd = [sys.executable, "-m", "http.server", os.environ.get("PORT", "8502"), "--bind", "127.0.0.1"]
sys.exit(subprocess.run(cmd, check=False).returncode)
`, ` => loopback 8502
PORT=5602 => loopback 5602`},
	{"python os.system", `-- Procfile --
web: python run.py
-- run.py --
import os
port = int(os.environ.get("PORT", 8503))
if os.system("python -c 'print(1)'") == 0:
    os.system("uvicorn app:app --host 0.0.0.0 --port %d" % port)
-- app.py --
async def app(scope, receive, send):
    pass
-- requirements.txt --
uvicorn
`, ` => any 8503
PORT=5603 => any 5603`},
	{"ruby exec of puma", `-- Procfile --
web: ruby start.rb
-- start.rb --
port = ENV.fetch('PORT', 8504)
exec 'puma', '-b', "tcp://0.0.0.0:#{port}", '-t', '1:2'
-- config.ru --
run ->(e) { [200, {}, ['x']] }
`, ` => any 8504
PORT=5604 => any 5604`},
	{"ruby system with a line", `-- Procfile --
web: ruby start.rb
-- start.rb --
abort 'no ruby' unless system('ruby -v')
system("rackup -o 0.0.0.0 -p #{ENV['PORT'] || 8505}")
-- config.ru --
run ->(e) { [200, {}, ['x']] }
`, ` => any 8505
PORT=5605 => any 5605`},
	{"node spawn of another program", `-- Procfile --
web: node start.js
-- package.json --
{"name":"x"}
-- start.js --
const { spawn } = require('node:child_process');
const port = process.env.PORT || '8506';
const child = spawn('python3', ['-m', 'http.server', port], { stdio: 'inherit' });
child.on('exit', (code) => process.exit(code ?? 1));
process.on('SIGTERM', () => child.kill('SIGTERM'));
`, ` => any 8506
PORT=5606 => any 5606`},
	{"node execSync of npm", `-- Procfile --
web: node start.js
-- package.json --
{"name":"x","scripts":{"serve":"node server.js"}}
-- start.js --
const { execSync } = require('child_process');
process.env.PORT ??= '8507';
execSync('npm run serve', { stdio: 'inherit' });
-- server.js --
require('http').createServer().listen(process.env.PORT, '0.0.0.0');
`, ` => any 8507
PORT=5607 => any 5607`},
	{"php passthru", `-- Procfile --
web: php run.php
-- run.php --
<?php
$port = getenv('PORT') ?: '8508';
passthru('php -S 0.0.0.0:' . escapeshellarg($port) . ' -t ' . escapeshellarg(__DIR__ . '/web'));
-- web/index.php --
hi
`, ` => any 8508
PORT=5608 => any 5608`},
	{"go runs nothing of its own but execs", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/x

go 1.26
-- main.go --
package main

import (
	"log"
	"os"
	"os/exec"
)

func main() {
	port := os.Getenv("PORT")
	if port == "" {
		port = "8509"
	}
	cmd := exec.Command("python3", "-m", "http.server", port)
	cmd.Stdout, cmd.Stderr = os.Stdout, os.Stderr
	if err := cmd.Run(); err != nil {
		log.Fatal(err)
	}
}
`, ` => any 8509
PORT=5609 => any 5609`},
	{"python subprocess with an environment of its own", `-- Procfile --
web: python run.py
-- run.py --
import os, subprocess
env = {**os.environ, "PORT": os.environ.get("PORT", "8510"), "HOST": "0.0.0.0"}
subprocess.check_call(["node", "server.js"], env=env, cwd=os.path.join(os.path.dirname(os.path.abspath(__file__)), "web"))
-- web/server.js --
require('http').createServer().listen(process.env.PORT, process.env.HOST);
`, ` => any 8510
PORT=5610 => any 5610`},
	{"python Popen of two", `-- Procfile --
web: python run.py
-- run.py --
import os, subprocess
procs = [subprocess.Popen(["python", "-m", "http.server", os.environ.get("API_PORT", "8511")]), subprocess.Popen("python -m http.server 8512 --bind 127.0.0.1", shell=True)]
for p in procs:
    p.wait()
`, ` => any 8511 & loopback 8512
API_PORT=5611 => any 5611 & loopback 8512`},
	{"php exec of node by proc_open", `-- Procfile --
web: php run.php
-- run.php --
<?php
$port = getenv('PORT') ?: 8521;
$p = proc_open(['node', 'server.js', '--port', (string) $port], [STDIN, STDOUT, STDERR], $pipes, __DIR__, ['PATH' => getenv('PATH'), 'HOST' => '0.0.0.0']);
exit(proc_close($p));
-- server.js --
const i = process.argv.indexOf('--port');
require('http').createServer().listen(+process.argv[i + 1], process.env.HOST || '127.0.0.1');
`, ` => any 8521
PORT=5621 => any 5621`},
	{"php system after a migration", `-- Procfile --
web: php start.php
-- start.php --
<?php
system('php migrate.php', $code);
if ($code !== 0) exit($code);
$host = getenv('HOST') ?: '0.0.0.0';
passthru("php -S $host:" . (getenv('PORT') ?: '8522') . " router.php");
-- migrate.php --
<?php
echo "migrated\n";
-- router.php --
<?php
echo "ok";
`, ` => any 8522`},
	{"php pcntl_exec", `-- Procfile --
web: php start.php
-- start.php --
<?php
pcntl_exec('/usr/bin/python3', ['-m', 'http.server', getenv('PORT') ?: '8523']);
`, ` => any 8523
PORT=5622 => any 5622`},
	{"ruby Process.spawn and wait", `-- Procfile --
web: ruby run.rb
-- run.rb --
port = (ENV['PORT'] || 8524).to_s
pid = Process.spawn({ 'HOST' => '0.0.0.0' }, 'node', 'server.js', port)
trap('TERM') { Process.kill('TERM', pid) }
Process.wait(pid)
exit $?.exitstatus
-- server.js --
require('http').createServer().listen(+process.argv[2], process.env.HOST || '127.0.0.1');
`, ` => any 8524
PORT=5623 => any 5623`},
	{"java process builder", `-- Procfile --
web: java -cp out Main
-- Main.java --
import java.util.*;
public class Main {
  public static void main(String[] args) throws Exception {
    String port = System.getenv().getOrDefault("PORT", "8525");
    List<String> command = new ArrayList<>(List.of("python3", "-m", "http.server", port));
    ProcessBuilder b = new ProcessBuilder(command).inheritIO();
    b.environment().put("LANG", "C");
    Process p = b.start();
    Runtime.getRuntime().addShutdownHook(new Thread(p::destroy));
    System.exit(p.waitFor());
  }
}
`, ` => any 8525
PORT=5624 => any 5624`},
	{"rust command", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::env;
use std::process::{exit, Command};

fn main() {
    let port = env::var("PORT").unwrap_or_else(|_| "8526".to_string());
    let status = Command::new("python3")
        .args(["-m", "http.server"])
        .arg(&port)
        .env("PYTHONUNBUFFERED", "1")
        .status()
        .expect("python3 is there");
    exit(status.code().unwrap_or(1));
}
`, ` => any 8526
PORT=5625 => any 5625`},
	{"deno command", `-- Procfile --
web: deno run -A main.ts
-- main.ts --
const command = new Deno.Command("python3", {
  args: ["-m", "http.server", Deno.env.get("PORT") ?? "8527", "--bind", "127.0.0.1"],
  stdout: "inherit",
});
const child = command.spawn();
const { code } = await child.status;
Deno.exit(code);
`, ` => loopback 8527
PORT=5626 => loopback 5626`},
	{"bun spawn", `-- Procfile --
web: bun start.ts
-- package.json --
{"name":"x"}
-- start.ts --
const proc = Bun.spawn(["node", "server.js"], { env: { ...process.env, PORT: process.env.PORT ?? "8528" }, stdout: "inherit" });
await proc.exited;
-- server.js --
require('http').createServer().listen(process.env.PORT);
`, ` => any 8528
PORT=5627 => any 5627`},
	{"python a script that checks and then serves", `-- Procfile --
web: python -m tools.start
-- tools/__init__.py --
-- tools/start.py --
import os
import shlex
import subprocess
import sys


def sh(line, **kwargs):
    print("+", line)
    return subprocess.run(shlex.split(line), check=True, **kwargs)


def main():
    sh("python -c 'import app'")
    args = ["--host", "0.0.0.0", "--port", os.environ.get("PORT", "8529")]
    if os.environ.get("RELOAD") == "1":
        args.append("--reload")
    sh("uvicorn app:app " + " ".join(args))


if __name__ == "__main__":
    sys.exit(main())
-- app.py --
async def app(scope, receive, send):
    pass
-- requirements.txt --
uvicorn
`, ` => any 8529
PORT=5628 RELOAD=1 => any 5628`},
	{"python os.execl of a shell script", `-- Procfile --
web: python boot.py
-- boot.py --
import os
os.environ.setdefault("PORT", "8530")
os.execl("/bin/sh", "sh", "serve.sh")
-- serve.sh --
exec node server.js
-- server.js --
require('http').createServer().listen(process.env.PORT, '0.0.0.0');
`, ` => any 8530
PORT=5629 => any 5629`},
	{"node spawn with shell", `-- Procfile --
web: node up.mjs
-- package.json --
{"name":"x","type":"module"}
-- up.mjs --
import { spawn, execFileSync } from 'node:child_process';
execFileSync('node', ['check.mjs'], { stdio: 'inherit' });
const port = process.env.PORT ?? 8531;
spawn(` + "`" + `node server.mjs --port=${port}` + "`" + `, { shell: true, stdio: 'inherit' }).on('close', process.exit);
-- check.mjs --
console.log('checked');
-- server.mjs --
import http from 'node:http';
const arg = process.argv.find((a) => a.startsWith('--port='));
http.createServer().listen(Number(arg.split('=')[1]), '127.0.0.1');
`, ` => loopback 8531
PORT=5630 => loopback 5630`},
	{"node npm run from a script with promises", `-- Procfile --
web: node up.js
-- package.json --
{"name":"x","scripts":{"serve":"PORT=${PORT:-8532} node server.js"}}
-- up.js --
const { promisify } = require('util');
const exec = promisify(require('child_process').exec);
async function main() {
  await exec('node -v');
  const { spawn } = require('child_process');
  const c = spawn('npm', ['run', 'serve'], { stdio: 'inherit' });
  await new Promise((resolve, reject) => c.on('exit', resolve).on('error', reject));
}
main();
-- server.js --
require('http').createServer().listen(process.env.PORT);
`, ` => any 8532`},
	{"ruby backticks before, then exec with one line", `-- Procfile --
web: ruby start.rb
-- start.rb --
version = ` + "`" + `ruby -v` + "`" + `.strip
puts "with #{version}"
exec("ruby -run -e httpd public -p #{ENV.fetch('PORT', '8533')} -b 0.0.0.0")
-- public/index.html --
x
`, ` => any 8533
PORT=5631 => any 5631`},
	{"go exec replaced", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/x

go 1.26
-- main.go --
package main

import (
	"log"
	"os"
	"os/exec"
	"syscall"
)

func main() {
	path, err := exec.LookPath("python3")
	if err != nil {
		log.Fatal(err)
	}
	port, ok := os.LookupEnv("PORT")
	if !ok {
		port = "8534"
	}
	env := append(os.Environ(), "LANG=C")
	log.Fatal(syscall.Exec(path, []string{"python3", "-m", "http.server", port}, env))
}
`, ` => any 8534
PORT=5632 => any 5632`},
	{"make picks by ifeq and wildcard", `-- Procfile --
web: make serve
-- Makefile --
SHELL := /bin/bash
STAGE ?= local
ifneq (,$(wildcard ./.env.$(STAGE)))
include .env.$(STAGE)
export
endif
ifeq ($(STAGE),live)
HOST = 0.0.0.0
else ifeq ($(STAGE),test)
HOST = ::1
else
HOST = 127.0.0.1
endif
PORT ?= 8601
FLAGS := $(if $(filter live test,$(STAGE)),--directory public,)
serve: public
	python3 -m http.server $(PORT) --bind $(HOST) $(FLAGS)
public:
	@mkdir -p public
-- .env.live --
PORT=8602
`, ` => loopback 8601
STAGE=live => any 8602
STAGE=live PORT=5701 => any 8602`},
	{"make with ifdef and subst", `-- Procfile --
web: make
-- Makefile --
ADDR := $(subst @,.,127@0@0@1)
ifdef DEBUG
ADDR := 0.0.0.0
endif
ifndef PORT
PORT := 8603
endif
run:
	node $(addsuffix .js,server) $(ADDR) $(PORT)
-- server.js --
require('http').createServer().listen(process.argv[3], process.argv[2]);
`, ` => loopback 8603
PORT=5702 => loopback 5702
DEBUG=1 => any 8603`},
	{"make with define of its own", `-- Procfile --
web: make -s run PORT=8604
-- Makefile --
PORT = 8605
HOSTS = 127.0.0.1 0.0.0.0
run: ; python3 -m http.server --bind $(lastword $(HOSTS)) $(or $(PORT),8000)
`, ` => any 8604
PORT=5703 => any 8604`},
}

func TestLaunched(t *testing.T) {
	t.Parallel()
	for _, c := range launchedPrograms {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
