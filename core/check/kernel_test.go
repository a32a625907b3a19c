package check_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/hex"
	"fmt"
	"net/netip"
	"os"
	"os/exec"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"
)

// The claim of the survey is where a process will listen. This test starts
// small servers for real, on the machine's own Node.js, Python, Ruby, PHP, Java,
// Deno, Bun, Rust and Elixir where they are found, reads the listening sockets of their processes from the kernel
// (proc(5)), and compares with what the survey said before.

type proof struct {
	name, needs, files, command string
	envs                        []string // NAME=VALUE …, PORT is filled with a free port
}

var proofs = []proof{
	{"http with a fallback", "node", `-- s.js --
const http = require('http');
http.createServer().listen(Number(process.env.PORT) || 0, process.env.HOST);
`, "node s.js", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", "PORT=abc", ""}},
	{"http without one", "node", "-- s.js --\nrequire('http').createServer().listen(process.env.PORT);\n", "node s.js", []string{"PORT=%d", "PORT="}},
	{"a port through three files", "node", `-- s.mjs --
import { start } from './start.mjs';
await start();
-- start.mjs --
import http from 'node:http';
import config from './config.mjs';
export const start = () => new Promise((done) => http.createServer().listen({ ...config.http }, done));
-- config.mjs --
export default { http: { port: Number.parseInt(process.env.PORT ?? '0', 10), host: process.env.NODE_ENV === 'production' ? '0.0.0.0' : 'localhost' } };
`, "node s.mjs", []string{"PORT=%d", "PORT=%d NODE_ENV=production"}},
	{"a class", "node", `-- s.js --
const http = require('http');
class Dome {
  constructor(options = {}) { this.options = options; }
  get port() { return this.options.port || Number(process.env.PORT) || 0; }
  open() { return http.createServer().listen(this.port, '127.0.0.1'); }
}
new Dome().open();
`, "node s.js", []string{"PORT=%d"}},
	{"a switch on the environment", "node", `-- s.js --
let host;
switch (process.env.SKY) {
  case 'clear':
  case 'bright':
    host = '0.0.0.0';
    break;
  default:
    host = '127.0.0.1';
}
require('http').createServer().listen(process.env.PORT, host);
`, "node s.js", []string{"PORT=%d", "PORT=%d SKY=bright"}},
	{"a package script with variables", "node", `-- package.json --
{ "name": "s", "scripts": { "start": "HOST=127.0.0.1 node s.js --port $PORT" } }
-- s.js --
const i = process.argv.indexOf('--port');
require('http').createServer().listen(process.argv[3], process.env.HOST);
`, "sh -c 'HOST=127.0.0.1 exec node s.js --port $PORT'", []string{"PORT=%d"}},
	{"a shell script", "node", `-- run.sh --
#!/bin/sh
set -e
export PORT=${PORT:-0}
export HOST=0.0.0.0
exec node s.js
-- s.js --
require('net').createServer().listen(process.env.PORT, process.env.HOST);
`, "sh run.sh", []string{"PORT=%d", ""}},
	{"a script with conditions", "python3", `-- run.sh --
#!/bin/sh
if [ -z "$HOST" ]; then
  HOST=127.0.0.1
fi
case "$SKY" in
  clear) HOST=0.0.0.0 ;;
esac
exec python3 -m http.server --bind $HOST ${PORT:-0}
`, "sh run.sh", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT=%d SKY=clear"}},
	{"the environment over defaults", "python3", `-- s.py --
import os
from collections import ChainMap
from types import SimpleNamespace
from wsgiref.simple_server import make_server

settings = {'PORT': '0', 'HOST': '127.0.0.1', **os.environ}
port = ChainMap(os.environ, {'PORT': '0'})['PORT']
s = SimpleNamespace(host=settings['HOST'], port=int(port))
make_server(s.host, s.port, None).serve_forever()
`, "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", ""}},
	{"a static getter", "node", `-- s.js --
class Settings {
  static get port() { return Settings.#read('PORT', 0); }
  static #read(name, fallback) {
    const v = process.env[name];
    return v === undefined ? fallback : Number(v);
  }
}
require('http').createServer().listen(Settings.port);
`, "node s.js", []string{"PORT=%d", ""}},
	{"a variable that is not exported", "node", `-- run.sh --
#!/bin/sh
HOST=127.0.0.1
if [ -z "$PORT" ]; then PORT=1; fi
exec node s.js
-- s.js --
require('http').createServer().listen(process.env.PORT || 0, process.env.HOST);
`, "sh run.sh", []string{"PORT=%d", "", "PORT=%d HOST=0.0.0.0"}},
	{"a variable set for one command", "python3", `-- run.sh --
#!/bin/sh
HOST=${HOST:-0.0.0.0} exec python3 -m http.server --bind ${HOST:-127.0.0.1} $PORT
`, "sh run.sh", []string{"PORT=%d", "PORT=%d HOST=127.0.0.2"}},
	{"a dotenv variable set by the program", "node", `-- s.js --
process.env.HOST = process.env.HOST || '127.0.0.1';
const { PORT = '0', HOST } = process.env;
require('http').createServer().listen(+PORT, HOST);
`, "node s.js", []string{"PORT=%d", "PORT=%d HOST=::"}},
	{"the standard library's server", "python3", `-- s.py --
import os
from http.server import BaseHTTPRequestHandler, HTTPServer


def main(host: str = '') -> None:
    port = int(os.environ.get('PORT', '0'))
    HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()


if __name__ == '__main__':
    main()
`, "python3 s.py", []string{"PORT=%d", "PORT=", "PORT=abc"}},
	{"http.server on the command line", "python3", "-- s.py --\n", "python3 -m http.server --bind 127.0.0.1 $PORT", []string{"PORT=%d"}},
	{"asyncio", "python3", `-- s.py --
import asyncio
import os
from dataclasses import dataclass


@dataclass
class Settings:
    host: str
    port: int = 0

    @classmethod
    def load(cls):
        return cls(host=os.getenv('HOST', '127.0.0.1'), port=int(os.getenv('PORT') or 0))


async def main():
    settings = Settings.load()
    server = await asyncio.start_server(lambda r, w: w.close(), settings.host, settings.port)
    async with server:
        await server.serve_forever()


asyncio.run(main())
`, "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT="}},
	{"argparse", "python3", `-- s.py --
import argparse
import os
from wsgiref.simple_server import make_server

p = argparse.ArgumentParser()
p.add_argument('--host', default='127.0.0.1')
p.add_argument('-p', '--port', type=int, default=os.environ.get('PORT', '0'))
args = p.parse_args()
make_server(args.host, args.port, None).serve_forever()
`, "python3 s.py --host 0.0.0.0", []string{"PORT=%d"}},
	{"an exception as a fallback", "python3", `-- s.py --
import os
import socketserver

try:
    PORT = int(os.environ['PORT'])
except (KeyError, ValueError):
    PORT = 0

with socketserver.TCPServer(('localhost', PORT), None) as server:
    server.serve_forever()
`, "python3 s.py", []string{"PORT=%d", "PORT=x", ""}},
	{"objects that are put together", "node", `-- s.js --
const http = require('http');
const defaults = { port: 0, host: '127.0.0.1' };
const options = Object.assign({}, defaults, { port: process.env.PORT }, 'PUBLIC' in process.env ? { host: '0.0.0.0' } : {});
http.createServer().listen({ ...options, port: [options.port, '0'].find(Boolean) });
`, "node s.js", []string{"PORT=%d", "PORT=%d PUBLIC=1", ""}},
	{"a module that is made by a condition", "node", `-- s.js --
const { port, host } = require('./config');
require('net').createServer().listen(port, host);
-- config.js --
const all = { development: { port: 0, host: 'localhost' }, production: { port: process.env.PORT, host: '0.0.0.0' } };
module.exports = all[process.env.NODE_ENV || 'development'];
`, "node s.js", []string{"PORT=%d NODE_ENV=production", "PORT=%d"}},
	{"a function that returns early", "node", `-- s.js --
const port = () => {
  const p = process.env.PORT;
  if (!p) return 0;
  return parseInt(p, 10);
};
(async () => {
  await null;
  require('http').createServer().listen(port(), process.env.HOST ?? '0.0.0.0');
})();
`, "node s.js", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"an argument that may be missing", "python3", `-- s.py --
import sys
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer


class Dome(ThreadingHTTPServer):
    daemon_threads = True


port = int(sys.argv[1]) if len(sys.argv) > 1 else 0
Dome(('127.0.0.1', port), BaseHTTPRequestHandler).serve_forever()
`, "python3 s.py $PORT", []string{"PORT=%d", ""}},
	{"a dictionary that is changed", "python3", `-- s.py --
import os
from wsgiref.simple_server import make_server

settings = dict(host='0.0.0.0', port=0)
if 'PORT' in os.environ:
    pass
settings.update(port=int(os.environ.get('PORT', settings['port'])))
settings['host'] = os.environ.get('HOST', settings['host'])
make_server(settings['host'], settings['port'], None).serve_forever()
`, "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"a match on the environment", "python3", `-- s.py --
import os
import socketserver

match os.environ.get('SKY', 'clear'):
    case 'clear' | 'bright':
        host = ''
    case _:
        host = '127.0.0.1'
socketserver.TCPServer((host, int(os.environ['PORT'])), None).serve_forever()
`, "python3 s.py", []string{"PORT=%d", "PORT=%d SKY=cloudy", ""}},
	{"data from a file", "python3", `-- s.py --
import json
import os
from http.server import BaseHTTPRequestHandler, HTTPServer

with open('config.json') as f:
    config = json.load(f)
HTTPServer((config['host'], int(os.environ.get('PORT', config['port']))), BaseHTTPRequestHandler).serve_forever()
-- config.json --
{"host": "127.0.0.1", "port": 0}
`, "python3 s.py", []string{"PORT=%d", ""}},
	{"a package that is run", "python3", `-- dome/__init__.py --
-- dome/__main__.py --
from wsgiref.simple_server import make_server
from . import settings as s

make_server(s.HOST, s.PORT, None).serve_forever()
-- dome/settings.py --
from os import environ as env

HOST, PORT = env.get('HOST', '0.0.0.0'), int(env['PORT'])
`, "python3 -m dome", []string{"PORT=%d", ""}},
}

// goSource writes a program of Go; imports stand on one line, since each file
// here is a text of a test.
func goSource(imports, rest string) string {
	var b strings.Builder
	b.WriteString(`-- main.go --
package main

`)
	for _, i := range strings.Fields(imports) {
		fmt.Fprintf(&b, "import %q\n", i)
	}
	return b.String() + rest + "\n"
}

// Servers of Go, which is always there.
var goProofs = []proof{
	{"a fallback", "go", goSource("log net/http os", `func main() {
	port := os.Getenv("PORT")
	if port == "" {
		port = "0"
	}
	log.Fatal(http.ListenAndServe(":"+port, nil))
}`), "go run .", []string{"PORT=%d", "", "PORT=x"}},
	{"a helper that looks variables up", "go", goSource("log net/http os", `func env(k, d string) string {
	if v, ok := os.LookupEnv(k); ok {
		return v
	}
	return d
}

func main() {
	log.Fatal(http.ListenAndServe(env("HOST", "127.0.0.1")+":"+env("PORT", "0"), nil))
}`), "go run .", []string{"PORT=%d", "PORT=%d HOST=", "PORT="}},
	{"a number, and an end without one", "go", goSource("fmt log net/http os strconv", `func main() {
	port, err := strconv.Atoi(os.Getenv("PORT"))
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("localhost:%d", port), nil))
}`), "go run .", []string{"PORT=%d", "PORT=x", ""}},
	{"a server in a structure, with a method", "go", goSource("net/http os", `type dome struct{ http *http.Server }

func open(port string) *dome { return &dome{http: &http.Server{Addr: ":" + port}} }

func (d *dome) run() { d.http.ListenAndServe() }

func main() { open(os.Getenv("PORT")).run() }`), "go run .", []string{"PORT=%d", ""}},
	{"a listener made by hand", "go", goSource("net net/http os", `var srv http.Server

func main() {
	l, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", os.Getenv("PORT")))
	if err != nil {
		panic(err)
	}
	srv.Serve(l)
}`), "go run .", []string{"PORT=%d", "PORT=x"}},
	{"another package, and a constant", "go", `-- config/config.go --
package config

import "os"

const host = "0.0.0.0"

// Settings of the dome.
type Settings struct{ Port string }

// Load reads them.
func Load() Settings { return Settings{Port: os.Getenv("PORT")} }

// Addr is where it listens.
func (s Settings) Addr() string { return host + ":" + s.Port }
` + goSource("net/http served/config", "func main() { http.ListenAndServe(config.Load().Addr(), nil) }"), "go run .", []string{"PORT=%d", ""}},
	{"flags", "go", goSource("flag fmt net/http", `func main() {
	var port int
	host := flag.String("host", "localhost", "the interface")
	flag.IntVar(&port, "port", 0, "the port")
	flag.Parse()
	http.ListenAndServe(fmt.Sprintf("%s:%d", *host, port), nil)
}`), "go run . -host 0.0.0.0 --port=$PORT", []string{"PORT=%d", "PORT=x"}},
}

func TestKernelAgrees(t *testing.T) {
	if testing.Short() {
		t.Skip("starts processes")
	}
	t.Parallel()
	compared := 0
	used := map[int]bool{}
	all := append(append(slices.Clone(proofs), goProofs...), others()...)
	for _, p := range all {
		if _, err := exec.LookPath(p.needs); err != nil {
			t.Logf("skipped: %s needs %s, which is not found", p.name, p.needs)
			continue
		}
		manifest := map[string]string{"python3": "-- requirements.txt --\n", "cargo": `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
`}[p.needs]
		if p.needs == "node" && !strings.Contains(p.files, "package.json") {
			manifest = "-- package.json --\n{ \"name\": \"s\" }\n"
		}
		if p.needs == "go" {
			manifest = `-- go.mod --
module served

go 1.25
`
		}
		dir := plant(t, manifest+"-- Procfile --\nweb: "+p.command+"\n"+p.files)
		command := p.command
		if p.needs == "go" { // built once, as go run would
			build := exec.Command("go", "build", "-o", "served", ".")
			build.Dir = dir
			if out, err := build.CombinedOutput(); err != nil {
				t.Fatalf("%s: %v\n%s", p.name, err, out)
			}
			command = "exec ./served" + strings.TrimPrefix(p.command, "go run .")
		}
		if p.needs == "cargo" {
			build := exec.Command("cargo", "build", "--quiet", "--offline")
			build.Dir = dir
			if out, err := build.CombinedOutput(); err != nil {
				t.Logf("skipped: %s does not build here: %v\n%s", p.name, err, out)
				continue
			}
			command = "exec " + command
		}
		for _, env := range p.envs {
			if strings.Contains(env, "%d") {
				port := freePort(t)
				for used[port] {
					port = freePort(t)
				}
				used[port] = true
				env = fmt.Sprintf(env, port)
			}
			compared++
			t.Run(p.name+" under "+env, func(t *testing.T) {
				t.Parallel()
				with := map[string]string{}
				for _, f := range strings.Fields(env) {
					k, v, _ := strings.Cut(f, "=")
					with[k] = v
				}
				var said []string
				for _, s := range run(t, dir, with).Components[0].Starts {
					for _, l := range s.Listeners {
						if s.Source == "process file" {
							said = append(said, say(*l.View.Under))
						}
					}
				}
				if len(said) == 0 {
					t.Fatal("the survey finds no listener")
				}
				got := observe(t, dir, command, strings.Fields(env))
				if len(said) == 1 && strings.HasSuffix(said[0], " 0") { // the kernel chooses
					host, _, _ := strings.Cut(got, " ")
					got = host + " 0"
				}
				if len(said) != 1 || said[0] != got {
					t.Errorf("the survey says it %v; the kernel: %s", said, got)
				}
			})
		}
	}
	t.Logf("%d outcomes compared with the kernel", compared)
}

// freePort gives a port that nothing listens on.
func freePort(t *testing.T) int {
	t.Helper()
	fd, err := syscall.Socket(syscall.AF_INET, syscall.SOCK_STREAM, 0)
	if err != nil {
		t.Fatal(err)
	}
	defer syscall.Close(fd)
	if err := syscall.Bind(fd, &syscall.SockaddrInet4{Addr: [4]byte{127, 0, 0, 1}}); err != nil {
		t.Fatal(err)
	}
	name, err := syscall.Getsockname(fd)
	if err != nil {
		t.Fatal(err)
	}
	return name.(*syscall.SockaddrInet4).Port
}

// observe starts a command and waits until one of its processes listens or
// all have ended.
func observe(t *testing.T, dir, command string, env []string) string {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	cmd := exec.CommandContext(ctx, "sh", "-c", command)
	cmd.Dir = dir
	cmd.Env = append([]string{"PATH=" + os.Getenv("PATH"), "HOME=" + dir, "LANG=C.UTF-8"}, env...)
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	var output bytes.Buffer
	cmd.Stdout, cmd.Stderr = &output, &output
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- cmd.Wait() }()
	defer func() {
		_ = syscall.Kill(-cmd.Process.Pid, syscall.SIGKILL)
	}()
	tick := time.NewTicker(20 * time.Millisecond)
	defer tick.Stop()
	for {
		select {
		case <-ended:
			return "exits"
		case <-ctx.Done():
			t.Fatalf("neither listens nor ends:\n%s", output.String())
		case <-tick.C:
			if s := listening(cmd.Process.Pid); s != "" {
				return s
			}
		}
	}
}

// listening reads the listening sockets of a process and of those it started
// (proc(5), /proc/pid/task/tid/children).
func listening(root int) string {
	inodes := map[string]bool{}
	todo := []int{root}
	for seen := map[int]bool{}; len(todo) > 0; {
		pid := todo[0]
		todo = todo[1:]
		if seen[pid] {
			continue
		}
		seen[pid] = true
		dir := fmt.Sprintf("/proc/%d", pid)
		fds, _ := os.ReadDir(dir + "/fd")
		for _, fd := range fds {
			if link, err := os.Readlink(dir + "/fd/" + fd.Name()); err == nil && strings.HasPrefix(link, "socket:[") {
				inodes[strings.TrimSuffix(strings.TrimPrefix(link, "socket:["), "]")] = true
			}
		}
		tasks, _ := os.ReadDir(dir + "/task")
		for _, task := range tasks {
			children, _ := os.ReadFile(dir + "/task/" + task.Name() + "/children")
			for _, c := range strings.Fields(string(children)) {
				if n, err := strconv.Atoi(c); err == nil {
					todo = append(todo, n)
				}
			}
		}
	}
	if len(inodes) == 0 {
		return ""
	}
	var found []string
	for _, table := range []string{"/proc/net/tcp", "/proc/net/tcp6"} {
		f, err := os.Open(table)
		if err != nil {
			continue
		}
		for sc := bufio.NewScanner(f); sc.Scan(); {
			x := strings.Fields(sc.Text())
			if len(x) < 10 || x[3] != "0A" || !inodes[x[9]] { // 0A is TCP_LISTEN
				continue
			}
			addr, port, _ := strings.Cut(x[1], ":")
			n, _ := strconv.ParseInt(port, 16, 32)
			found = append(found, fmt.Sprintf("%s %d", scope(addr), n))
		}
		f.Close()
	}
	slices.Sort(found)
	found = slices.Compact(found)
	return strings.Join(found, " and ")
}

// scope names the interface of an address as the kernel writes it: in words of
// four bytes, each in the machine's own order.
func scope(text string) string {
	raw, err := hex.DecodeString(text)
	if err != nil {
		return text
	}
	for i := 0; i+4 <= len(raw); i += 4 {
		slices.Reverse(raw[i : i+4])
	}
	a, ok := netip.AddrFromSlice(raw)
	switch {
	case !ok:
		return text
	case a.IsUnspecified():
		return "any"
	case a.IsLoopback():
		return "loopback"
	}
	return a.String()
}
