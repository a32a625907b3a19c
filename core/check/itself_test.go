package check_test

import (
	"fmt"
	"strings"
	"testing"
	"time"
)

// Values that hold themselves, or each the next one twice: what walks through them
// must come back, and say nothing wrong of the program.
func TestValuesThatHoldThemselves(t *testing.T) {
	t.Parallel()
	const js = "const a = { n: 1, l: [] };\nfor (let i = 0; i < 12; i++) a['k' + i] = a;\na.l.push(a.l, a.l, a);\nlet d = [1];\nfor (let i = 0; i < 60; i++) d = [d, d];\ntry {\n"
	const jsServe = "\n} catch (e) {}\nrequire('http').createServer((q, r) => r.end()).listen(8000, '0.0.0.0');\n"
	const py = "import copy, json, http.server\nfrom dataclasses import dataclass\n@dataclass\nclass D:\n    a: object\n    b: object\na = {}\nl = []\nl.extend([l, l])\nfor i in range(12):\n    a[str(i)] = a\nd = D(1, 2)\nd.a = d.b = d\ntry:\n    "
	const pyServe = "\nexcept Exception:\n    pass\nhttp.server.HTTPServer(('0.0.0.0', 8000), http.server.SimpleHTTPRequestHandler).serve_forever()\n"
	const rb = "require 'webrick'\na = {}\nb = {}\nl = []\n12.times { |i| a[i] = a; b[i] = b; l << l }\nbegin\n  "
	const rbServe = "\nrescue StandardError, SystemStackError\nend\nWEBrick::HTTPServer.new(Port: 8000, BindAddress: '0.0.0.0').start\n"
	const java = "import java.util.*;\nclass S {\n record R(Object a, Object b) {}\n public static void main(String[] args) throws Exception {\n List<Object> l = new ArrayList<>();\n for (int i = 0; i < 12; i++) l.add(l);\n R d = new R(1, 2), e = new R(1, 2);\n for (int i = 0; i < 60; i++) { d = new R(d, d); e = new R(e, e); }\n try { "
	const javaServe = " } catch (Throwable t) {}\n new java.net.ServerSocket(8000).accept();\n }\n}\n"
	const goHead = "package main\nimport (\"encoding/json\"; \"net/http\"; \"strconv\")\ntype P struct{ A, B any }\nfunc main() {\na := map[string]any{}\nfor i := 0; i < 12; i++ { a[strconv.Itoa(i)] = a }\nd := P{1, 2}\nfor i := 0; i < 60; i++ { d = P{d, d} }\n"
	const goServe = "\nhttp.ListenAndServe(\":8000\", nil)\n}\n"
	for _, c := range []struct{ file, start, head, code, tail string }{
		{"s.js", "node s.js", js, "JSON.stringify(a)", jsServe},
		{"s.js", "node s.js", js, "String(a.l)", jsServe},
		{"s.js", "node s.js", js, "a.l.flat(3); d[0].length", jsServe},
		{"s.js", "node s.js", js, "require('convict')({ a: { default: a, env: 'A' } }).get('a')", jsServe},
		{"s.py", "python s.py", py, "json.dumps(a)", pyServe},
		{"s.py", "python s.py", py, "copy.deepcopy(a) == a", pyServe},
		{"s.py", "python s.py", py, "str(l)", pyServe},
		{"s.py", "python s.py", py, "d == D(d, d)", pyServe},
		{"s.rb", "ruby s.rb", rb, "l.flatten", rbServe},
		{"s.rb", "ruby s.rb", rb, "l.join", rbServe},
		{"s.rb", "ruby s.rb", rb, "l.uniq", rbServe},
		{"s.rb", "ruby s.rb", rb, "a == b", rbServe},
		{"S.java", "java S.java", java, "l.toString();", javaServe},
		{"S.java", "java S.java", java, "l.indexOf(l);", javaServe},
		{"S.java", "java S.java", java, "d.equals(e);", javaServe},
		{"main.go", "go run .", goHead, "json.Marshal(a)", goServe},
		{"main.go", "go run .", goHead, "_ = d == P{}", goServe},
	} {
		dir := plant(t, "-- Procfile --\nweb: "+c.start+"\n-- go.mod --\nmodule dome\n\ngo 1.22\n-- "+c.file+" --\n"+c.head+c.code+c.tail)
		began := time.Now()
		got := allOutcomes(run(t, dir, quotedEnv("")).Components[0].Starts)
		if took := time.Since(began); got != "any 8000" || took > 30*time.Second {
			t.Errorf("%s: %s after %v", c.code, got, took)
		}
	}
}

// TestMethodsThatCallEachOther looks at methods of Go of which each calls all others: each
// way through them would be another.
func TestMethodsThatCallEachOther(t *testing.T) {
	t.Parallel()
	const n = 24
	var b strings.Builder
	b.WriteString("-- Procfile --\nweb: bin/gate\n-- go.mod --\nmodule gate\n\ngo 1.25\n-- main.go --\npackage main\n\nimport \"net/http\"\n\ntype gate struct {\n\tstep int\n\taddr string\n}\n")
	for i := range n {
		fmt.Fprintf(&b, "\nfunc (g *gate) turn%d() {\n\tg.step++\n\tg.addr = \"0.0.0.0\"\n", i)
		for j := range n {
			if j != i {
				fmt.Fprintf(&b, "\tif g.step > %d {\n\t\tg.turn%d()\n\t}\n", j, j)
			}
		}
		b.WriteString("}\n")
	}
	b.WriteString("\nfunc main() {\n\tg := &gate{}\n\tg.turn0()\n\thttp.ListenAndServe(g.addr+\":8000\", nil)\n}\n")
	dir := plant(t, b.String())
	began := time.Now()
	got := allOutcomes(run(t, dir, quotedEnv("")).Components[0].Starts)
	if took := time.Since(began); got != "any 8000" && got != "unknown" || took > 30*time.Second {
		t.Errorf("%s after %v", got, took)
	}
}
