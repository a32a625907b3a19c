package check_test

import "testing"

// ended are statements that end a program where what they need is not there, and their
// sound twins. Each was run: what comes of the program is what came of it.
var ended = []struct{ lang, statement, want string }{
	{"node", `if ([1, [2, [3]]].flat(Infinity).join("") !== "123") process.exit(1);`, "loopback 8000"},
	{"node", `if ([0, 0, 0].fill(7, 1).join() !== "0,7,7") process.exit(1);`, "loopback 8000"},
	{"node", `if ("abcabc".indexOf("c", 3) !== 5) process.exit(1);`, "loopback 8000"},
	{"node", `if ("Hello".replace(/l/g, (m, at) => m + at) !== "Hel2l3o") process.exit(1);`, "loopback 8000"},
	{"node", `if ("abc".replace("b", "[$&]") !== "a[b]c") process.exit(1);`, "loopback 8000"},
	{"node", `if ("x=1".match(/(\w)=(\d)/).slice(1).join() !== "x,1") process.exit(1);`, "loopback 8000"},
	{"node", `if (Object.keys({ b: 1, 2: 0, a: 1, 1: 0 }).join() !== "1,2,b,a") process.exit(1);`, "loopback 8000"},
	{"node", `if (JSON.stringify({ a: 1, b: 2 }, ["a"]) !== "{\"a\":1}") process.exit(1);`, "loopback 8000"},
	{"node", `if (JSON.stringify([1], null, 2) !== "[\n  1\n]") process.exit(1);`, "loopback 8000"},
	{"node", `if (JSON.parse("{\"a\":1}", (k, v) => (k === "a" ? 5 : v)).a !== 5) process.exit(1);`, "loopback 8000"},
	{"node", `if (String(1e21) !== "1e+21" || String(1e-7) !== "1e-7") process.exit(1);`, "loopback 8000"},
	{"node", "if (`${{ toString: () => \"z\" }}` !== \"z\") process.exit(1);", "loopback 8000"},
	{"node", `if (({ valueOf: () => 5 }) + 1 !== 6) process.exit(1);`, "loopback 8000"},
	{"node", `if ((() => { function F(x) { this.x = x; } F.prototype.get = function () { return this.x; }; return new F(4).get(); })() !== 4) process.exit(1);`, "loopback 8000"},
	{"node", `if (new URL("../x", "http://h/a/b/c").href !== "http://h/a/x") process.exit(1);`, "loopback 8000"},
	{"node", `if (new URL("http://h:81/a").origin !== "http://h:81") process.exit(1);`, "loopback 8000"},
	{"node", `if (path.relative("/a/b", "/a/c") !== "../c") process.exit(1);`, "loopback 8000"},
	{"node", `if (path.parse("/x/y.tar.gz").name !== "y.tar") process.exit(1);`, "loopback 8000"},
	{"node", `if (require("crypto").createHash("md5").update("a").digest("hex").slice(0, 4) !== "0cc1") process.exit(1);`, "loopback 8000"},
	{"node", `if ((255.5).toFixed(1) !== "255.5" || (12345).toExponential(2) !== "1.23e+4") process.exit(1);`, "loopback 8000"},
	{"node", `if ([1, 2, 3].findLastIndex((x) => x < 3) !== 1) process.exit(1);`, "loopback 8000"},
	{"node", `if ([1, 2, 3].with(1, 9).join() !== "1,9,3") process.exit(1);`, "loopback 8000"},
	{"node", `const a = process.env.NOPE.split(',');`, "exits"},
	{"node", `const { NOPE } = process.env; const a = NOPE.trim();`, "exits"},
	{"node", `const f = (v) => v.split(','); const a = f(process.env.NOPE);`, "exits"},
	{"node", `const a = process.env.NOPE?.split(',') ?? [];`, "loopback 8000"},
	{"node", `const a = (process.env.NOPE || '').split(',');`, "loopback 8000"},
	{"node", `const a = new URL(process.env.NOPE);`, "exits"},
	{"node", `const a = new URL(process.env.NOPE || 'http://dome');`, "loopback 8000"},
	{"node", `const a = path.join(process.env.NOPE, 'x');`, "exits"},
	{"node", `const a = path.join(process.env.NOPE ?? '.', 'x');`, "loopback 8000"},
	{"node", `const a = [...process.env.NOPE];`, "exits"},
	{"node", `assert(process.env.NOPE, 'NOPE');`, "exits"},
	{"node", `assert(process.env.HOME ?? 'x');`, "loopback 8000"},
	{"node", `const a = 'a=b'.match(/c/)[0];`, "exits"},
	{"node", `const a = 'a=b'.match(/c/)?.[0];`, "loopback 8000"},
	{"node", `const a = {}; a.b();`, "exits"},
	{"node", `const a = {}; a.b?.();`, "loopback 8000"},
	{"node", `let a = []; try { a = process.env.NOPE.split(','); } catch { a = []; }`, "loopback 8000"},
	{"node", `const a = fs.readdirSync('nodir');`, "exits"},
	{"node", `const a = [].reduce((x, y) => x + y);`, "exits"},
	{"node", `const a = [].reduce((x, y) => x + y, 0);`, "loopback 8000"},
	{"python", `import itertools
if list(itertools.product([1], "ab")) != [(1, "a"), (1, "b")]: raise SystemExit(1)`, "loopback 8000"},
	{"python", `import itertools
if [k for k, g in itertools.groupby("aab")] != ["a", "b"]: raise SystemExit(1)`, "loopback 8000"},
	{"python", `import hashlib
if hashlib.md5(b"a").hexdigest()[:4] != "0cc1": raise SystemExit(1)`, "loopback 8000"},
	{"python", `import urllib.parse
if urllib.parse.quote("a b/c") != "a%20b/c": raise SystemExit(1)`, "loopback 8000"},
	{"python", `if "-12".zfill(5) != "-0012" or "ab".center(5) != "  ab ": raise SystemExit(1)`, "loopback 8000"},
	{"python", `class A:
    def __init__(self, x): self.x = x
    def __add__(self, o): return A(self.x + o.x)
if (A(1) + A(2)).x != 3: raise SystemExit(1)`, "loopback 8000"},
	{"python", `class A:
    def __iter__(self): return iter([1, 2])
if list(A()) != [1, 2]: raise SystemExit(1)`, "loopback 8000"},
	{"python", `class A:
    def __bool__(self): return False
if A(): raise SystemExit(1)`, "loopback 8000"},
	{"python", `import json
if json.dumps({"b": 1, "a": "é"}, sort_keys=True) != '{"a": "\\u00e9", "b": 1}': raise SystemExit(1)`, "loopback 8000"},
	{"python", `import textwrap
if textwrap.dedent("  a\n    b") != "a\n  b": raise SystemExit(1)`, "loopback 8000"},
	{"python", `from enum import IntEnum, auto
class E(IntEnum):
    A = 1
    B = auto()
if E.B != 2: raise SystemExit(1)`, "loopback 8000"},
	{"python", `import ipaddress
if not ipaddress.ip_address("127.0.0.1").is_loopback: raise SystemExit(1)`, "loopback 8000"},
	{"python", `a = [1, 2, 3]
del a[0]
if a != [2, 3]: raise SystemExit(1)`, "loopback 8000"},
	{"python", `if 3 * "ab" != "ababab": raise SystemExit(1)`, "loopback 8000"},
	{"python", `if [1, 2] > [1, 3]: raise SystemExit(1)`, "loopback 8000"},
	{"python", `if (2, "a") < (1, "b"): raise SystemExit(1)`, "loopback 8000"},
	{"python", `if os.sep != "/" or os.linesep != "\n": raise SystemExit(1)`, "loopback 8000"},
	{"python", `a = os.getenv('NOPE').strip()`, "exits"},
	{"python", `a = os.getenv('NOPE', '').strip()`, "loopback 8000"},
	{"python", `a = os.environ.get('NOPE', default='8').isdigit()`, "loopback 8000"},
	{"python", `a = int(os.environ.get('NOPE'))`, "exits"},
	{"python", `a = int(os.environ.get('NOPE') or 5)`, "loopback 8000"},
	{"python", `a = 'x' + os.getenv('NOPE')`, "exits"},
	{"python", `a = f"{os.getenv('NOPE')}/x"`, "loopback 8000"},
	{"python", `a = os.path.join(os.getenv('NOPE'), 'x')`, "exits"},
	{"python", `a = json.loads(os.getenv('NOPE'))`, "exits"},
	{"python", `a = ','.join([os.getenv('NOPE')])`, "exits"},
	{"python", `os.environ['A'] = 5`, "exits"},
	{"python", `os.environ['A'] = '5'`, "loopback 8000"},
	{"python", `a = 'ab'.split(' ', 1)[1]`, "exits"},
	{"python", `a = 'a b'.split(' ', 1)[1]`, "loopback 8000"},
	{"python", `a = [1, 2] < [1, 3]`, "loopback 8000"},
	{"python", `a = 3 * 'x'`, "loopback 8000"},
	{"python", `a = 5 + '5'`, "exits"},
	{"python", `a = os.getenv('NOPE') == 5`, "loopback 8000"},
	{"python", `a = os.getenv('NOPE') > 5`, "exits"},
	{"python", `try:
    a = int(os.getenv('NOPE'))
except TypeError:
    a = 1`, "loopback 8000"},
	{"python", `try:
    a = int(os.getenv('NOPE'))
except ValueError:
    a = 1`, "exits"},
	{"ruby", `sum = 0
"ab".each_char { |c| sum += c.ord }
exit 1 if sum != 195`, "loopback 8000"},
	{"ruby", `exit 1 if "a" "b" != "ab"`, "loopback 8000"},
	{"ruby", `exit 1 if URI("http://u:p@h:81/x?y=1").port != 81`, "loopback 8000"},
	{"ruby", `exit 1 if "3.7x".to_f != 3.7`, "loopback 8000"},
	{"ruby", `exit 1 if Integer("0x1f", 16) != 31`, "loopback 8000"},
	{"ruby", `e = [1, 2].each
exit 1 if e.next + e.next != 3`, "loopback 8000"},
	{"ruby", `exit 1 if "hello".gsub(/[el]/, "e" => "3", "l" => "1") != "h311o"`, "loopback 8000"},
	{"ruby", `class E < StandardError
  def initialize(m = "dome")
    super
  end
end
begin
  raise E
rescue E => e
  exit 1 if e.message != "dome"
end`, "loopback 8000"},
	{"ruby", `a = ENV['NOPE'].split(',')`, "exits"},
	{"ruby", `a = ENV['NOPE'].to_s.split(',')`, "loopback 8000"},
	{"ruby", `a = ENV['NOPE']&.split(',')`, "loopback 8000"},
	{"ruby", `a = Integer(ENV['NOPE'])`, "exits"},
	{"ruby", `a = Integer(ENV['NOPE'] || '5')`, "loopback 8000"},
	{"ruby", `a = Integer(ENV['NOPE']) rescue 5`, "loopback 8000"},
	{"ruby", `a = 'x' + ENV['NOPE']`, "exits"},
	{"ruby", `a = "x#{ENV['NOPE']}"`, "loopback 8000"},
	{"ruby", `a = File.join(ENV['NOPE'], 'x')`, "exits"},
	{"ruby", `a = JSON.parse(ENV['NOPE'])`, "exits"},
	{"ruby", `a = JSON.parse(ENV['NOPE'] || '{}')`, "loopback 8000"},
	{"ruby", `a = 5 + '5'`, "exits"},
	{"ruby", `a = 1.0 / 0`, "loopback 8000"},
	{"ruby", `a = 1 / 0`, "exits"},
	{"ruby", `a = ENV['NOPE'].frozen?`, "loopback 8000"},
	{"ruby", `Thread.new { raise 'x' }`, "loopback 8000"},
	{"ruby", `Thread.new { raise 'x' }.join`, "exits"},
	{"php", `$a = explode(',', getenv('NOPE'));`, "loopback 8000"},
	{"php", `$a = null; $a->go();`, "exits"},
	{"php", `$a = null; $b = $a?->go();`, "loopback 8000"},
	{"php", `function f(int $x) { return $x; } $a = f('x');`, "exits"},
	{"php", `function f(int $x) { return $x; } $a = f('5');`, "loopback 8000"},
	{"php", `function f(int $x) { return $x; } $a = f(null);`, "exits"},
	{"php", `function f(?int $x) { return $x; } $a = f(null);`, "loopback 8000"},
	{"php", `$a = json_decode('{bad', false, 512, JSON_THROW_ON_ERROR);`, "exits"},
	{"php", `$a = json_decode('{bad');`, "loopback 8000"},
	{"php", `$a = count(null);`, "exits"},
	{"java", `String a = System.getenv("NOPE").trim();`, "exits"},
	{"java", `String a = System.getenv("NOPE") + "x";`, "loopback 8000"},
	{"java", `URI a = URI.create(System.getenv("NOPE"));`, "exits"},
	{"java", `Path a = Path.of(System.getenv("NOPE"));`, "exits"},
	{"java", `Path a = Path.of("x");`, "loopback 8000"},
	{"java", `List<String> a = List.of(System.getenv("NOPE"));`, "exits"},
	{"java", `List<String> a = Arrays.asList(System.getenv("NOPE"));`, "loopback 8000"},
	{"java", `System.setProperty("x", System.getenv("NOPE"));`, "exits"},
	{"java", `new Thread(() -> { throw new RuntimeException("x"); }).start();`, "loopback 8000"},
	{"java", `String a = "ab".split(":")[1];`, "exits"},
	{"java", `try { System.getenv("NOPE").trim(); } catch (NullPointerException e) { }`, "loopback 8000"},
}

// endedIn are the programs around them.
var endedIn = map[string]struct{ start, file, before, after string }{
	"node": {"node s.js", "s.js", `const fs = require('fs'), path = require('path'), assert = require('assert');
`, `
require('http').createServer().listen(8000, '127.0.0.1');
`},
	"python": {"python s.py", "s.py", `import base64, json, os, re
from http.server import HTTPServer, BaseHTTPRequestHandler
`, `
HTTPServer(("127.0.0.1", 8000), BaseHTTPRequestHandler).serve_forever()
`},
	"ruby": {"ruby s.rb", "s.rb", `require 'socket'
require 'json'
require 'uri'
`, `
TCPServer.new('127.0.0.1', 8000).accept
`},
	"php": {"php s.php", "s.php", `<?php
`, `
$srv = stream_socket_server('tcp://127.0.0.1:8000');
while (true) {
    stream_socket_accept($srv, -1);
}
`},
	"java": {"java S.java", "S.java", `import java.net.*;
import java.nio.file.*;
import java.util.*;

public class S {
    public static void main(String[] args) throws Exception {
`, `
        new ServerSocket(8000, 50, InetAddress.getLoopbackAddress()).accept();
    }
}
`},
}

func TestEnded(t *testing.T) {
	t.Parallel()
	for _, c := range ended {
		t.Run(c.lang+": "+c.statement, func(t *testing.T) {
			t.Parallel()
			in := endedIn[c.lang]
			tree := "-- Procfile --\nweb: " + in.start + "\n"
			if c.lang == "node" {
				tree += "-- package.json --\n{\"name\": \"dome\"}\n"
			}
			outcome(t, tree+"-- "+in.file+" --\n"+in.before+c.statement+in.after, " => "+c.want)
		})
	}
}
