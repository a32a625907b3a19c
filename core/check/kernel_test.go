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
	"path/filepath"
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
	{"http with a fallback", "node", "-- s.js --\nconst http = require('http');\nhttp.createServer().listen(Number(process.env.PORT) || 0, process.env.HOST);\n", "node s.js", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", "PORT=abc", ""}},
	{"http without one", "node", "-- s.js --\nrequire('http').createServer().listen(process.env.PORT);\n", "node s.js", []string{"PORT=%d", "PORT="}},
	{"a port through three files", "node", "-- s.mjs --\nimport { start } from './start.mjs';\nawait start();\n-- start.mjs --\nimport http from 'node:http';\nimport config from './config.mjs';\nexport const start = () => new Promise((done) => http.createServer().listen({ ...config.http }, done));\n-- config.mjs --\nexport default { http: { port: Number.parseInt(process.env.PORT ?? '0', 10), host: process.env.NODE_ENV === 'production' ? '0.0.0.0' : 'localhost' } };\n", "node s.mjs", []string{"PORT=%d", "PORT=%d NODE_ENV=production"}},
	{"a class", "node", "-- s.js --\nconst http = require('http');\nclass Dome {\n  constructor(options = {}) { this.options = options; }\n  get port() { return this.options.port || Number(process.env.PORT) || 0; }\n  open() { return http.createServer().listen(this.port, '127.0.0.1'); }\n}\nnew Dome().open();\n", "node s.js", []string{"PORT=%d"}},
	{"a switch on the environment", "node", "-- s.js --\nlet host;\nswitch (process.env.SKY) {\n  case 'clear':\n  case 'bright':\n    host = '0.0.0.0';\n    break;\n  default:\n    host = '127.0.0.1';\n}\nrequire('http').createServer().listen(process.env.PORT, host);\n", "node s.js", []string{"PORT=%d", "PORT=%d SKY=bright"}},
	{"a package script with variables", "node", "-- package.json --\n{ \"name\": \"s\", \"scripts\": { \"start\": \"HOST=127.0.0.1 node s.js --port $PORT\" } }\n-- s.js --\nconst i = process.argv.indexOf('--port');\nrequire('http').createServer().listen(process.argv[3], process.env.HOST);\n", "sh -c 'HOST=127.0.0.1 exec node s.js --port $PORT'", []string{"PORT=%d"}},
	{"a shell script", "node", "-- run.sh --\n#!/bin/sh\nset -e\nexport PORT=${PORT:-0}\nexport HOST=0.0.0.0\nexec node s.js\n-- s.js --\nrequire('net').createServer().listen(process.env.PORT, process.env.HOST);\n", "sh run.sh", []string{"PORT=%d", ""}},
	{"a script with conditions", "python3", "-- run.sh --\n#!/bin/sh\nif [ -z \"$HOST\" ]; then\n  HOST=127.0.0.1\nfi\ncase \"$SKY\" in\n  clear) HOST=0.0.0.0 ;;\nesac\nexec python3 -m http.server --bind $HOST ${PORT:-0}\n", "sh run.sh", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT=%d SKY=clear"}},
	{"the environment over defaults", "python3", "-- s.py --\nimport os\nfrom collections import ChainMap\nfrom types import SimpleNamespace\nfrom wsgiref.simple_server import make_server\n\nsettings = {'PORT': '0', 'HOST': '127.0.0.1', **os.environ}\nport = ChainMap(os.environ, {'PORT': '0'})['PORT']\ns = SimpleNamespace(host=settings['HOST'], port=int(port))\nmake_server(s.host, s.port, None).serve_forever()\n", "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", ""}},
	{"a static getter", "node", "-- s.js --\nclass Settings {\n  static get port() { return Settings.#read('PORT', 0); }\n  static #read(name, fallback) {\n    const v = process.env[name];\n    return v === undefined ? fallback : Number(v);\n  }\n}\nrequire('http').createServer().listen(Settings.port);\n", "node s.js", []string{"PORT=%d", ""}},
	{"a variable that is not exported", "node", "-- run.sh --\n#!/bin/sh\nHOST=127.0.0.1\nif [ -z \"$PORT\" ]; then PORT=1; fi\nexec node s.js\n-- s.js --\nrequire('http').createServer().listen(process.env.PORT || 0, process.env.HOST);\n", "sh run.sh", []string{"PORT=%d", "", "PORT=%d HOST=0.0.0.0"}},
	{"a variable set for one command", "python3", "-- run.sh --\n#!/bin/sh\nHOST=${HOST:-0.0.0.0} exec python3 -m http.server --bind ${HOST:-127.0.0.1} $PORT\n", "sh run.sh", []string{"PORT=%d", "PORT=%d HOST=127.0.0.2"}},
	{"a dotenv variable set by the program", "node", "-- s.js --\nprocess.env.HOST = process.env.HOST || '127.0.0.1';\nconst { PORT = '0', HOST } = process.env;\nrequire('http').createServer().listen(+PORT, HOST);\n", "node s.js", []string{"PORT=%d", "PORT=%d HOST=::"}},
	{"the standard library's server", "python3", "-- s.py --\nimport os\nfrom http.server import BaseHTTPRequestHandler, HTTPServer\n\n\ndef main(host: str = '') -> None:\n    port = int(os.environ.get('PORT', '0'))\n    HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()\n\n\nif __name__ == '__main__':\n    main()\n", "python3 s.py", []string{"PORT=%d", "PORT=", "PORT=abc"}},
	{"http.server on the command line", "python3", "-- s.py --\n", "python3 -m http.server --bind 127.0.0.1 $PORT", []string{"PORT=%d"}},
	{"asyncio", "python3", "-- s.py --\nimport asyncio\nimport os\nfrom dataclasses import dataclass\n\n\n@dataclass\nclass Settings:\n    host: str\n    port: int = 0\n\n    @classmethod\n    def load(cls):\n        return cls(host=os.getenv('HOST', '127.0.0.1'), port=int(os.getenv('PORT') or 0))\n\n\nasync def main():\n    settings = Settings.load()\n    server = await asyncio.start_server(lambda r, w: w.close(), settings.host, settings.port)\n    async with server:\n        await server.serve_forever()\n\n\nasyncio.run(main())\n", "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT="}},
	{"argparse", "python3", "-- s.py --\nimport argparse\nimport os\nfrom wsgiref.simple_server import make_server\n\np = argparse.ArgumentParser()\np.add_argument('--host', default='127.0.0.1')\np.add_argument('-p', '--port', type=int, default=os.environ.get('PORT', '0'))\nargs = p.parse_args()\nmake_server(args.host, args.port, None).serve_forever()\n", "python3 s.py --host 0.0.0.0", []string{"PORT=%d"}},
	{"an exception as a fallback", "python3", "-- s.py --\nimport os\nimport socketserver\n\ntry:\n    PORT = int(os.environ['PORT'])\nexcept (KeyError, ValueError):\n    PORT = 0\n\nwith socketserver.TCPServer(('localhost', PORT), None) as server:\n    server.serve_forever()\n", "python3 s.py", []string{"PORT=%d", "PORT=x", ""}},
	{"objects that are put together", "node", "-- s.js --\nconst http = require('http');\nconst defaults = { port: 0, host: '127.0.0.1' };\nconst options = Object.assign({}, defaults, { port: process.env.PORT }, 'PUBLIC' in process.env ? { host: '0.0.0.0' } : {});\nhttp.createServer().listen({ ...options, port: [options.port, '0'].find(Boolean) });\n", "node s.js", []string{"PORT=%d", "PORT=%d PUBLIC=1", ""}},
	{"a module that is made by a condition", "node", "-- s.js --\nconst { port, host } = require('./config');\nrequire('net').createServer().listen(port, host);\n-- config.js --\nconst all = { development: { port: 0, host: 'localhost' }, production: { port: process.env.PORT, host: '0.0.0.0' } };\nmodule.exports = all[process.env.NODE_ENV || 'development'];\n", "node s.js", []string{"PORT=%d NODE_ENV=production", "PORT=%d"}},
	{"a function that returns early", "node", "-- s.js --\nconst port = () => {\n  const p = process.env.PORT;\n  if (!p) return 0;\n  return parseInt(p, 10);\n};\n(async () => {\n  await null;\n  require('http').createServer().listen(port(), process.env.HOST ?? '0.0.0.0');\n})();\n", "node s.js", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"an argument that may be missing", "python3", "-- s.py --\nimport sys\nfrom http.server import BaseHTTPRequestHandler, ThreadingHTTPServer\n\n\nclass Dome(ThreadingHTTPServer):\n    daemon_threads = True\n\n\nport = int(sys.argv[1]) if len(sys.argv) > 1 else 0\nDome(('127.0.0.1', port), BaseHTTPRequestHandler).serve_forever()\n", "python3 s.py $PORT", []string{"PORT=%d", ""}},
	{"a dictionary that is changed", "python3", "-- s.py --\nimport os\nfrom wsgiref.simple_server import make_server\n\nsettings = dict(host='0.0.0.0', port=0)\nif 'PORT' in os.environ:\n    pass\nsettings.update(port=int(os.environ.get('PORT', settings['port'])))\nsettings['host'] = os.environ.get('HOST', settings['host'])\nmake_server(settings['host'], settings['port'], None).serve_forever()\n", "python3 s.py", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"a match on the environment", "python3", "-- s.py --\nimport os\nimport socketserver\n\nmatch os.environ.get('SKY', 'clear'):\n    case 'clear' | 'bright':\n        host = ''\n    case _:\n        host = '127.0.0.1'\nsocketserver.TCPServer((host, int(os.environ['PORT'])), None).serve_forever()\n", "python3 s.py", []string{"PORT=%d", "PORT=%d SKY=cloudy", ""}},
	{"data from a file", "python3", "-- s.py --\nimport json\nimport os\nfrom http.server import BaseHTTPRequestHandler, HTTPServer\n\nwith open('config.json') as f:\n    config = json.load(f)\nHTTPServer((config['host'], int(os.environ.get('PORT', config['port']))), BaseHTTPRequestHandler).serve_forever()\n-- config.json --\n{\"host\": \"127.0.0.1\", \"port\": 0}\n", "python3 s.py", []string{"PORT=%d", ""}},
	{"a package that is run", "python3", "-- dome/__init__.py --\n-- dome/__main__.py --\nfrom wsgiref.simple_server import make_server\nfrom . import settings as s\n\nmake_server(s.HOST, s.PORT, None).serve_forever()\n-- dome/settings.py --\nfrom os import environ as env\n\nHOST, PORT = env.get('HOST', '0.0.0.0'), int(env['PORT'])\n", "python3 -m dome", []string{"PORT=%d", ""}},
}

// goSource writes a program of Go; imports stand on one line, since each file
// here is a text of a test.
func goSource(imports, rest string) string {
	var b strings.Builder
	b.WriteString("-- main.go --\npackage main\n\n")
	for _, i := range strings.Fields(imports) {
		fmt.Fprintf(&b, "import %q\n", i)
	}
	return b.String() + rest + "\n"
}

// Servers of Go, which is always there.
var goProofs = []proof{
	{"a fallback", "go", goSource("log net/http os", "func main() {\n\tport := os.Getenv(\"PORT\")\n\tif port == \"\" {\n\t\tport = \"0\"\n\t}\n\tlog.Fatal(http.ListenAndServe(\":\"+port, nil))\n}"), "go run .", []string{"PORT=%d", "", "PORT=x"}},
	{"a helper that looks variables up", "go", goSource("log net/http os", "func env(k, d string) string {\n\tif v, ok := os.LookupEnv(k); ok {\n\t\treturn v\n\t}\n\treturn d\n}\n\nfunc main() {\n\tlog.Fatal(http.ListenAndServe(env(\"HOST\", \"127.0.0.1\")+\":\"+env(\"PORT\", \"0\"), nil))\n}"), "go run .", []string{"PORT=%d", "PORT=%d HOST=", "PORT="}},
	{"a number, and an end without one", "go", goSource("fmt log net/http os strconv", "func main() {\n\tport, err := strconv.Atoi(os.Getenv(\"PORT\"))\n\tif err != nil {\n\t\tlog.Fatal(err)\n\t}\n\tlog.Fatal(http.ListenAndServe(fmt.Sprintf(\"localhost:%d\", port), nil))\n}"), "go run .", []string{"PORT=%d", "PORT=x", ""}},
	{"a server in a structure, with a method", "go", goSource("net/http os", "type dome struct{ http *http.Server }\n\nfunc open(port string) *dome { return &dome{http: &http.Server{Addr: \":\" + port}} }\n\nfunc (d *dome) run() { d.http.ListenAndServe() }\n\nfunc main() { open(os.Getenv(\"PORT\")).run() }"), "go run .", []string{"PORT=%d", ""}},
	{"a listener made by hand", "go", goSource("net net/http os", "var srv http.Server\n\nfunc main() {\n\tl, err := net.Listen(\"tcp\", net.JoinHostPort(\"127.0.0.1\", os.Getenv(\"PORT\")))\n\tif err != nil {\n\t\tpanic(err)\n\t}\n\tsrv.Serve(l)\n}"), "go run .", []string{"PORT=%d", "PORT=x"}},
	{"another package, and a constant", "go", "-- config/config.go --\npackage config\n\nimport \"os\"\n\nconst host = \"0.0.0.0\"\n\n// Settings of the dome.\ntype Settings struct{ Port string }\n\n// Load reads them.\nfunc Load() Settings { return Settings{Port: os.Getenv(\"PORT\")} }\n\n// Addr is where it listens.\nfunc (s Settings) Addr() string { return host + \":\" + s.Port }\n" + goSource("net/http served/config", "func main() { http.ListenAndServe(config.Load().Addr(), nil) }"), "go run .", []string{"PORT=%d", ""}},
	{"flags", "go", goSource("flag fmt net/http", "func main() {\n\tvar port int\n\thost := flag.String(\"host\", \"localhost\", \"the interface\")\n\tflag.IntVar(&port, \"port\", 0, \"the port\")\n\tflag.Parse()\n\thttp.ListenAndServe(fmt.Sprintf(\"%s:%d\", *host, port), nil)\n}"), "go run . -host 0.0.0.0 --port=$PORT", []string{"PORT=%d", "PORT=x"}},
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
		manifest := map[string]string{"python3": "-- requirements.txt --\n", "cargo": "-- Cargo.toml --\n[package]\nname = \"dome\"\nversion = \"0.1.0\"\nedition = \"2021\"\n"}[p.needs]
		if p.needs == "node" && !strings.Contains(p.files, "package.json") {
			manifest = "-- package.json --\n{ \"name\": \"s\" }\n"
		}
		if p.needs == "go" {
			manifest = "-- go.mod --\nmodule served\n\ngo 1.25\n"
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

// listening reads the listening sockets of the processes of a group.
func listening(group int) string {
	inodes := map[string]bool{}
	dirs, _ := filepath.Glob("/proc/[0-9]*")
	for _, d := range dirs {
		pid, _ := strconv.Atoi(filepath.Base(d))
		if g, err := syscall.Getpgid(pid); err != nil || g != group {
			continue
		}
		fds, _ := filepath.Glob(d + "/fd/*")
		for _, fd := range fds {
			if link, err := os.Readlink(fd); err == nil && strings.HasPrefix(link, "socket:[") {
				inodes[strings.TrimSuffix(strings.TrimPrefix(link, "socket:["), "]")] = true
			}
		}
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
