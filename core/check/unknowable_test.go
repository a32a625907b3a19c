package check_test

import (
	"fmt"
	"strings"
	"testing"
)

// unknowable are programs whose port depends on the name of the machine: nobody
// can tell it from source. Each is a program of the language with the lines in it.
var unknowable = []struct {
	language, program string
	lines             []string
}{
	{"JavaScript", `-- Procfile --
web: node s.js
-- package.json --
{"name":"a","private":true}
-- s.js --
const h = require('os').hostname();
let port = 3000;
LINES
require('http').createServer().listen(port);
`, []string{
		`port = new Map([[h, 3001], ['b', 3002]]).get('dome') || 3003;`,
		`const m = {}; m[h] = 3001; port = m.dome || 3002;`,
		`port = [h, 'dome'].indexOf('dome') + 3000;`,
		`port = ['a', h].includes('dome') ? 3001 : 3002;`,
		`port = new Set([h, 'dome']).size + 3000;`,
		`if (h === 'dome') port = 3001;`,
		`if (h.startsWith('d')) { port += 1; }`,
		`port = h ? 3000 + h.length : 3001;`,
		`for (const c of h) port++;`,
		`switch (h) { case 'dome': port = 3001; break; default: port = 3002; }`,
		`const list = ['b', h].sort(); port = list[0] === 'b' ? 3001 : 3002;`,
		`const o = { port: 3000 }; if (h === 'x') Object.assign(o, { port: 3001 }); port = o.port;`,
		`const o = { port: 3000 }; if (h === 'x') o.port = 3001; port = o.port;`,
		`function pick(x) { if (x === 'dome') return 3001; return 3002; } port = pick(h);`,
		`const f = (x) => x.length > 4 ? 3001 : 3002; port = f(h);`,
		`const l = [3001, 3002]; if (h > 'm') l.reverse(); port = l[0];`,
		`let i = 0; while (h[i] !== undefined && h[i] !== '-') i++; port += i;`,
		`class C { constructor() { this.port = 3000; } bump() { if (h === 'x') this.port = 3001; } } const c = new C(); c.bump(); port = c.port;`,
		`let done = false; const go = () => { done = true; }; if (h === 'x') go(); port = done ? 3001 : 3002;`,
		`const bump = () => { port = 3001; }; if (h === 'dome') bump();`,
		`h.split('').forEach(() => { port++; });`,
		`port = Number(` + "`" + `${3000 + h.length}` + "`" + `);`,
		`const t = { dome: 3001 }; port = t[h] ?? 3002;`,
		`if (h === 'x') process.env.PORT = '3001'; port = process.env.PORT || 3002;`,
		`const keys = Object.keys({ [h]: 1, dome: 2 }); port = 3000 + keys.length;`,
		`try { if (h === 'x') throw new Error('a'); port = 3001; } catch { port = 3002; }`,
		`function setup() { if (h === 'x') { port = 3005; return; } port = 3006; } setup();`,
		`let s = ''; for (const x of [h, 'b']) { if (x === 'b') break; s += 'x'; } port = 3000 + s.length;`,
		`const ports = [3001, 3002].filter((p) => h !== 'x' || p > 3001); port = ports[0];`,
		`port = [3001, 3002].find((p) => p > 3001 || h === 'x');`,
		`h === 'x' && (port = 3001);`,
		`h === 'x' || bump(); function bump() { port = 3009; }`,
	}},
	{"Python", `-- Procfile --
web: python3 s.py
-- requirements.txt --
-- s.py --
import os, socket
from http.server import HTTPServer, BaseHTTPRequestHandler
h = socket.gethostname()
port = 3000
LINES
HTTPServer(('', port), BaseHTTPRequestHandler).serve_forever()
`, []string{
		`port = len({h, 'dome'}) + 3000`,
		`port = {h: 3001, 'b': 3002}.get('dome', 3003)`,
		`d = {h: 1}
port = 3001 if 'dome' in d else 3002`,
		`from collections import Counter
port = 3000 + Counter([h, 'dome'])['dome']`,
		`port = 3001 if ('a', h) in [('a', 'dome')] else 3002`,
		`port = sorted([h, 'm']).index('m') + 3000`,
		`if h == 'dome':
    port = 3001`,
		`if h.startswith('d'):
    port += 1`,
		`for c in h:
    port += 1`,
		`match h:
    case 'dome':
        port = 3001
    case _:
        port = 3002`,
		`def pick(x):
    if x == 'dome':
        return 3001
    return 3002
port = pick(h)`,
		`def bump():
    global port
    port = 3001
if h == 'x':
    bump()`,
		`l = [3001, 3002]
if h > 'm':
    l.reverse()
port = l[0]`,
		`class C:
    port = 3000
if h == 'x':
    C.port = 3001
port = C.port`,
		`d = {'port': 3000}
if h == 'x':
    d['port'] = 3001
port = d['port']`,
		`d = {'port': 3000}
if h == 'x':
    d.update(port=3001)
port = d['port']`,
		`if h == 'x':
    os.environ['PORT'] = '3001'
port = int(os.environ.get('PORT', 3002))`,
		`if h == 'x':
    os.environ.setdefault('PORT', '3001')
port = int(os.environ.get('PORT', 3002))`,
		`port = next((p for p in (3001, 3002) if h == 'x' or p > 3001), 3003)`,
		`port = max(3000, 3000 + len(h))`,
		`port = 3001 if any(c == 'x' for c in h) else 3002`,
		`port = dict([(h, 1)]).setdefault('dome', 3001)`,
		`port = {'dome': 3001}.get(h, 3002)`,
		`try:
    port = {'dome': 3001}[h]
except KeyError:
    port = 3002`,
		`i = 0
while i < len(h):
    i += 1
port += i`,
		`port = 3000 + [h, 'a'].count('a')`,
		`l = [h]
l.remove('dome') if 'dome' in l else None
port = 3000 + len(l)`,
		`a, *b = h.split('.')
port = 3000 + len(b)`,
		`port = 3001 if h in ('dome', 'gate') else 3002`,
		`port = int(f'30{len(h):02d}')`,
		`s = {1, 2}
if h == 'x':
    s.add(3)
port = 3000 + len(s)`,
		`setattr(os, 'zz', 1) if h else None
port = getattr(os, h, 3001)`,
	}},
	{"Go", `-- Procfile --
web: ./s
-- go.mod --
module s

go 1.23
-- main.go --
package main
import ("fmt";"net/http";"os";"sort";"strings";"slices";"maps")
var _ = fmt.Sprint
var _ = sort.Ints
var _ = strings.Fields
var _ = slices.Sort[[]int]
var _ = maps.Keys[map[string]int]
func main() {
 h, _ := os.Hostname()
 port := 3000
 _ = h
 LINES
 http.ListenAndServe(fmt.Sprintf(":%d", port), nil)
}
`, []string{
		`m := map[string]int{h: 3001}; if v, ok := m["dome"]; ok { port = v }`,
		`m := map[string]int{"dome": 3001}; if v, ok := m[h]; ok { port = v }`,
		`m := map[string]int{}; m[h] = 1; port = 3000 + len(m) + m["dome"]`,
		`for range strings.SplitSeq(h, "-") { port++ }`,
		`for range h { port++ }`,
		`l := []string{"m", h}; sort.Strings(l); if l[0] == "m" { port = 3001 }`,
		`l := []string{"m", h}; slices.Sort(l); if l[0] == "m" { port = 3001 }`,
		`if h == "dome" { port = 3001 }`,
		`if strings.HasPrefix(h, "d") { port++ }`,
		`switch h { case "dome": port = 3001; default: port = 3002 }`,
		`switch { case h > "m": port = 3001 }`,
		`pick := func(x string) int { if x == "dome" { return 3001 }; return 3002 }; port = pick(h)`,
		`l := []int{3001, 3002}; if h > "m" { slices.Reverse(l) }; port = l[0]`,
		`if slices.Contains([]string{"a", h}, "dome") { port = 3001 }`,
		`port = 3000 + slices.Index([]string{h, "dome"}, "dome")`,
		`port = 3000 + len(h)`,
		`port = 3000 + len(strings.Split(h, "."))`,
		`type C struct{ p int }; c := &C{3000}; if h == "x" { c.p = 3001 }; port = c.p`,
		`for i := 0; i < len(h); i++ { port++ }`,
		`if h == "x" { os.Setenv("PORT", "3001") }; if os.Getenv("PORT") == "" { port = 3002 }`,
		`l := []string{}; if h == "x" { l = append(l, "a") }; port += len(l)`,
		`k := slices.Sorted(maps.Keys(map[string]int{h: 1, "m": 2})); if k[0] == "m" { port = 3001 }`,
		`var p *int; if h == "x" { p = &port }; if p != nil { *p = 3001 }`,
		`defer func() {}(); func() { if h == "x" { port = 3001; return }; port = 3002 }()`,
		`if len(h) > 4 && port == 3000 { port = 3001 }`,
		`x := 0; fmt.Sscanf(h, "dome%d", &x); port += x`,
	}},
	{"Ruby", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source "https://rubygems.org"
-- s.rb --
require 'socket'
h = Socket.gethostname
port = 3000
LINES
TCPServer.new('0.0.0.0', port).accept
`, []string{
		`port = 3001 if h == 'dome'`,
		`port = { h => 3001 }.fetch('dome', 3002)`,
		`port = { 'dome' => 3001 }.fetch(h, 3002)`,
		`port = { 'dome' => 3001 }[h] || 3002`,
		`port += [h, 'a'].count('a')`,
		`port = [h, 'm'].sort.first == 'm' ? 3001 : 3002`,
		`port = [h, 'm'].max == 'm' ? 3001 : 3002`,
		`h.each_char { port += 1 }`,
		`port += h.length`,
		`case h
when 'dome' then port = 3001
else port = 3002
end`,
		`case h
when /^d/ then port = 3001
end`,
		`def pick(x)
  return 3001 if x == 'dome'
  3002
end
port = pick(h)`,
		`port = [h, 'dome'].uniq.size + 3000`,
		`port = [h, 'dome'].include?('gate') ? 3001 : 3002`,
		`o = { port: 3000 }
o[:port] = 3001 if h == 'x'
port = o[:port]`,
		`o = { port: 3000 }
o.merge!(port: 3001) if h == 'x'
port = o[:port]`,
		`ENV['PORT'] = '3001' if h == 'x'
port = ENV.fetch('PORT', 3002).to_i`,
		`unless h.start_with?('d')
  port = 3001
end`,
		`port = h.empty? ? 3001 : 3002 + h.size`,
		`l = [3001, 3002]
l.reverse! if h > 'm'
port = l.first`,
		`port = [3001, 3002].find { |p| p > 3001 || h == 'x' }`,
		`i = 0
i += 1 until h[i].nil?
port += i`,
		`port += 1 while port < 3000 + h.size`,
		`@p = 3000
def bump; @p = 3001; end
bump if h == 'x'
port = @p`,
		`port = [['a', h]].include?(['a', 'dome']) ? 3001 : 3002`,
		`port = [h, 'a'].group_by(&:itself).size + 3000`,
		`port = [h, 'a'].index('a') + 3000`,
		`require 'set'
port = Set.new([h, 'a']).size + 3000`,
	}},
	{"PHP", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
$h = gethostname();
$port = 3000;
LINES
$s = stream_socket_server("tcp://0.0.0.0:$port");
while (true) stream_socket_accept($s, -1);
`, []string{
		`if ($h === 'dome') { $port = 3001; }`,
		`$m = [$h => 3001]; $port = $m['dome'] ?? 3002;`,
		`$m = ['dome' => 3001]; $port = $m[$h] ?? 3002;`,
		`$port = in_array('dome', [$h, 'a']) ? 3001 : 3002;`,
		`$port = array_search('a', [$h, 'a']) + 3000;`,
		`$port = count(array_unique([$h, 'a'])) + 3000;`,
		`$l = [$h, 'm']; sort($l); $port = $l[0] === 'm' ? 3001 : 3002;`,
		`$port = match ($h) { 'dome' => 3001, default => 3002 };`,
		`switch ($h) { case 'dome': $port = 3001; break; default: $port = 3002; }`,
		`foreach (str_split($h) as $c) { $port++; }`,
		`$port += strlen($h);`,
		`function pick($x) { if ($x === 'dome') { return 3001; } return 3002; } $port = pick($h);`,
		`if (str_starts_with($h, 'd')) $port++;`,
		`$o = ['port' => 3000]; if ($h === 'x') { $o['port'] = 3001; } $port = $o['port'];`,
		`if ($h === 'x') putenv('PORT=3001'); $port = getenv('PORT') ?: 3002;`,
		`$i = 0; while ($i < strlen($h)) { $i++; } $port += $i;`,
		`$l = [3001, 3002]; if ($h > 'm') { $l = array_reverse($l); } $port = $l[0];`,
		`$port = max([$h, 'm']) === 'm' ? 3001 : 3002;`,
		`$port = array_key_exists('dome', [$h => 1]) ? 3001 : 3002;`,
		`$port = count(array_filter([$h, 'a'], fn($x) => $x === 'a')) + 3000;`,
		`$port = isset(['dome' => 1][$h]) ? 3001 : 3002;`,
		`$c = new class { public $p = 3000; function b($h) { if ($h === 'x') $this->p = 3001; } }; $c->b($h); $port = $c->p;`,
		`function bump() { global $port; $port = 3001; } if ($h === 'x') bump();`,
		`preg_match('/(\d+)/', $h, $m); $port = 3000 + (int)($m[1] ?? 1);`,
		`list($a, $b) = explode('-', $h . '-3001'); $port = (int)$b;`,
	}},
	{"Java", `-- Procfile --
web: java S.java
-- README --
-- S.java --
import com.sun.net.httpserver.HttpServer;
import java.net.*; import java.util.*; import java.util.stream.*;
public class S { public static void main(String[] a) throws Exception {
 String h = InetAddress.getLocalHost().getHostName();
 int port = 3000;
 LINES
 HttpServer.create(new InetSocketAddress(port), 0).start();
}}
`, []string{
		`if (h.equals("dome")) port = 3001;`,
		`port = Map.of("dome", 3001).getOrDefault(h, 3002);`,
		`Map<String,Integer> m = new HashMap<>(); m.put(h, 3001); port = m.getOrDefault("dome", 3002);`,
		`port = List.of(h, "a").indexOf("a") + 3000;`,
		`port = List.of(h, "a").contains("dome") ? 3001 : 3002;`,
		`port = new HashSet<>(Arrays.asList(h, "a")).size() + 3000;`,
		`List<String> l = new ArrayList<>(List.of(h, "m")); Collections.sort(l); port = l.get(0).equals("m") ? 3001 : 3002;`,
		`port = switch (h) { case "dome" -> 3001; default -> 3002; };`,
		`switch (h) { case "dome": port = 3001; break; default: port = 3002; }`,
		`for (char c : h.toCharArray()) port++;`,
		`port += h.length();`,
		`port = pick(h); } static int pick(String x) { if (x.equals("dome")) return 3001; return 3002; } static void z() throws Exception { int port = 0;`,
		`int[] p = {3000}; if (h.isEmpty()) p[0] = 3001; port = p[0];`,
		`if (h.startsWith("d") && port == 3000) port++;`,
		`port = (int) Stream.of(h, "a").filter(x -> x.equals("a")).count() + 3000;`,
		`port = Stream.of(3001, 3002).filter(x -> x > 3001 || h.isEmpty()).findFirst().get();`,
		`int i = 0; while (i < h.length()) i++; port += i;`,
		`port = Optional.of(h).filter(x -> x.equals("a")).map(x -> 3001).orElse(3002);`,
		`port = Stream.of(h, "m").sorted().toList().get(0).equals("m") ? 3001 : 3002;`,
		`if (h.equals("x")) System.setProperty("p", "3001"); port = Integer.getInteger("p", 3002);`,
		`port = Stream.of(h, "a").distinct().toList().size() + 3000;`,
		`port = h.equals("dome") ? 3001 : 3002;`,
		`port = h.compareTo("m") > 0 ? 3001 : 3002;`,
	}},
}

// TestUnknowable asks for the port of each.
func TestUnknowable(t *testing.T) {
	t.Parallel()
	for _, u := range unknowable {
		for i, lines := range u.lines {
			t.Run(fmt.Sprintf("%s %d", u.language, i), func(t *testing.T) {
				t.Parallel()
				outcome(t, strings.Replace(u.program, "LINES", lines, 1), "PLACE=hill => unknown")
			})
		}
	}
}
