package check_test

import (
	"fmt"
	"strings"
	"testing"
)

// TestManyChoices holds sources that choose between the last value and itself,
// or add to a list under a condition, over and over: what is followed of each
// side doubles every time. What works with values is cut short there; one
// statement after the other they are gone through, unless one fails.
func TestManyChoices(t *testing.T) {
	t.Parallel()
	times := func(n int, line func(i int) string) string {
		var b strings.Builder
		for i := range n {
			b.WriteString(line(i))
		}
		return b.String()
	}
	const head = "-- package.json --\n{\"name\": \"dome\"}\n-- Procfile --\nweb: node s.js\n-- s.js --\n"
	const listen = `require("http").createServer().listen`
	chosen := times(40, func(i int) string { return fmt.Sprintf("const c%d = process.env.A ? c%d : c%d;\n", i+1, i, i) })
	fallen := times(40, func(i int) string { return fmt.Sprintf("const c%d = c%d || c%d;\n", i+1, i, i) })
	for name, s := range map[string]string{
		"a property":        "const c0 = { port: process.env.PORT };\n" + chosen + listen + "(c40.port);\n",
		"a fallback":        "const c0 = process.env.B ? { port: 1 } : null;\n" + fallen + listen + "(c40.port);\n",
		"an element":        "const c0 = [process.env.PORT];\n" + chosen + "const [port] = c40;\n" + listen + "(port);\n",
		"written into":      "const c0 = { port: process.env.PORT };\n" + chosen + "if (process.env.B) c40.port = 1;\n" + listen + "(c40.port);\n",
		"handed to servers": "const c0 = { port: process.env.PORT };\n" + chosen + listen + "(c40);\n",
		"added to": "const list = [];\n" + times(60, func(i int) string {
			return fmt.Sprintf("if (process.env.A%d) list.push({ port: %d });\n", i, i+1)
		}) + "for (const x of list) " + listen + "(x.port);\n",
	} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			want := map[string]string{"a fallback": "A=1 PORT=5123 => exits", "added to": "A4=1 => any 5"}[name]
			if want == "" {
				want = "A=1 PORT=5123 => any 5123"
			}
			outcome(t, head+s, want)
		})
	}
}

// TestSettingsThatNoFileHas asks a package for settings of which no file says
// anything.
func TestSettingsThatNoFileHas(t *testing.T) {
	t.Parallel()
	outcome(t, "-- package.json --\n{\"name\": \"dome\", \"dependencies\": {\"config\": \"4.1.1\"}}\n-- Procfile --\nweb: node s.js\n-- config/default.json --\n{\"port\": 3000}\n-- s.js --\nconst config = require(\"config\");\nrequire(\"http\").createServer().listen(config.port, config.host);\n",
		" => any 3000")
}

// TestPatternByName asks for a match with an argument by its name.
func TestPatternByName(t *testing.T) {
	t.Parallel()
	outcome(t, "-- requirements.txt --\n-- Procfile --\nweb: python s.py\n-- s.py --\nimport os, re\nfrom http.server import BaseHTTPRequestHandler, HTTPServer\nport = int(os.environ[\"PORT\"]) if re.match(r\"dome\", string=\"dome\") else 1\nHTTPServer((\"\", port), BaseHTTPRequestHandler).serve_forever()\n",
		"PORT=5123 => unknown")
}

// TestEmptyElements goes through a list whose elements are empty lists.
func TestEmptyElements(t *testing.T) {
	t.Parallel()
	outcome(t, "-- Gemfile --\n-- Procfile --\nweb: ruby s.rb\n-- s.rb --\nrequire \"socket\"\no = { port: ENV[\"PORT\"] }\n[[]].each { |a, b| o[:host] = b if a }\nTCPServer.new(\"0.0.0.0\", o[:port])\n",
		"PORT=5123 => any 5123")
}

// TestIfWithoutElse opens thirty texts that are not closed before an if: each of
// them was read twice by the next.
func TestIfWithoutElse(t *testing.T) {
	t.Parallel()
	outcome(t, "-- requirements.txt --\n-- Procfile --\nweb: python s.py\n-- s.py --\nimport os\nfrom http.server import BaseHTTPRequestHandler, HTTPServer\nHTTPServer((\"\", int(os.environ[\"PORT\"])), BaseHTTPRequestHandler).serve_forever()\n"+strings.Repeat("if os.environ.get(\"DOME]\n", 30),
		"PORT=5123 => any 5123")
}

// TestWordsThatNobodyKnows starts gunicorn with words that a command prints: one
// may be its address, the value of another flag is none.
func TestWordsThatNobodyKnows(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ command, want string }{
		{"gunicorn $(cat flags) app:app", "unknown"},
		{"gunicorn --workers $(nproc) app:app", "any 5123"},
		{"gunicorn --workers=$(nproc) app:app", "any 5123"},
		{"gunicorn app:app --threads $(( $(nproc) * 2 ))", "any 5123"},
	} {
		outcome(t, "-- requirements.txt --\nflask==3.1.0\ngunicorn==23.0.0\n-- Procfile --\nweb: "+c.command+"\n-- app.py --\nfrom flask import Flask\napp = Flask(__name__)\n", "PORT=5123 => "+c.want)
	}
}

// TestBranchesOfAScript starts what the asked environment and the arguments of the
// script decide.
func TestBranchesOfAScript(t *testing.T) {
	t.Parallel()
	const tree = `-- requirements.txt --
-- Procfile --
web: ./run.sh %
-- run.sh exec --
#!/usr/bin/env bash
opts=(--bind 127.0.0.1)
while getopts "ap:" o; do
  case $o in
    a) opts=(--bind 0.0.0.0) ;;
    p) port=$OPTARG ;;
  esac
done
shift $((OPTIND - 1))
if [ "$1" = shell ]; then
  exec bash
fi
if [ "$MODE" = dev ]; then
  exec python3 -m http.server 5200
fi
exec python3 -m http.server "${opts[@]}" "${port:-5100}"
`
	for _, c := range []struct{ arguments, want string }{
		{"web", " => loopback 5100\nMODE=dev => any 5200\nMODE=live => loopback 5100"},
		{"-p 5101 web", " => loopback 5101"},
		{"-p5102", " => loopback 5102"},
	} {
		outcome(t, strings.Replace(tree, "%", c.arguments, 1), c.want)
	}
}

// TestArgumentsOfAScript hands the arguments of a script over, with others before
// and behind them, and past subshells that end.
func TestArgumentsOfAScript(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ arguments, script, want string }{
		{"", "(cd /tmp; exit 0)\nexec python3 -m http.server $PORT", "any 5123"},
		{"", "( exit 1 ) || true\nexec python3 -m http.server $PORT", "any 5123"},
		{"", "set -- python3 -m http.server \"$PORT\" \"$@\"\nexec \"$@\"", "any 5123"},
		{"python3 -m http.server $PORT", "set -- \"$@\" --bind 127.0.0.1\nexec \"$@\"", "loopback 5123"},
		{"--bind 127.0.0.1", "if [ \"${1#-}\" != \"$1\" ]; then\n  set -- python3 -m http.server 5200 \"$@\"\nfi\nexec \"$@\"", "loopback 5200"},
		{"python3 -m http.server 5201", "if [ \"${1#-}\" != \"$1\" ]; then\n  set -- python3 -m http.server 5200 \"$@\"\nfi\nexec \"$@\"", "any 5201"},
	} {
		outcome(t, "-- requirements.txt --\n-- Procfile --\nweb: ./run.sh "+c.arguments+"\n-- run.sh exec --\n#!/bin/sh\n"+c.script+"\n", "PORT=5123 => "+c.want)
	}
}

// TestFoldersThatAreListed counts what a folder holds: files and folders.
func TestFoldersThatAreListed(t *testing.T) {
	t.Parallel()
	outcome(t, "-- package.json --\n{\"name\": \"dome\"}\n-- Procfile --\nweb: node s.js\n-- plugins/one.js --\n\n-- plugins/two/index.js --\n\n-- s.js --\nconst n = require(\"fs\").readdirSync(\"./plugins\").length;\nrequire(\"http\").createServer().listen(9000 + n);\n",
		" => any 9002")
}
