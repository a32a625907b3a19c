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

// TestRustInCircles looks at programs of Rust in which something comes back to itself:
// the walk through them must end, and what stands in the source is told all the same.
func TestRustInCircles(t *testing.T) {
	t.Parallel()
	const serve = ` for s in std::net::TcpListener::bind("0.0.0.0:8000").unwrap().incoming() {} }`
	for _, c := range []struct{ name, source string }{
		{"macros", `macro_rules! a { ($x:expr) => { a!($x) } } fn main() { a!(1);` + serve},
		{"macros that double", `macro_rules! a { ($($x:tt)*) => { a!($($x)* $($x)*) } } fn main() { a!(1 2 3);` + serve},
		{"functions", `fn f(n: u32) -> u32 { f(n + 1) } fn main() { f(1);` + serve},
		{"names", `mod a { pub use super::b::*; } mod b { pub use super::a::*; } use a::*; fn main() { let y: Bar = x;` + serve},
		{"types", `type A<T> = B<T>; type B<T> = A<A<T>>; struct S { a: A<S> } fn main() { let x: A<u8> = S::default();` + serve},
		{"constants", `const A: u16 = B + 1; const B: u16 = A + 1; fn main() { let x = A;` + serve},
		{"defaults", `#[derive(Default)] struct A { b: Box<B> } #[derive(Default)] struct B { a: Box<A> } fn main() { let x = A::default();` + serve},
		{"owners", `use std::{rc::Rc, cell::RefCell}; struct N { next: RefCell<Option<Rc<N>>> } fn main() { let a = Rc::new(N { next: RefCell::new(None) }); *a.next.borrow_mut() = Some(Rc::clone(&a)); let s = format!("{:?}", a); let b = (*a).clone(); if a == b {}` + serve},
		{"lists that hold copies", `fn main() { let mut v: Vec<Vec<u8>> = vec![]; for _ in 0..60 { let c = v.clone(); v.push(c); let c = v.clone(); v.push(c); }` + serve},
		{"lists that hold themselves", `fn main() { let mut v = vec![]; let r = &mut v; r.push(r); v.push(v); let w = v.clone(); if v == w {} v.sort();` + serve},
		{"texts", `fn main() { let mut s = String::from("aaaa"); loop { s = s.clone() + &s; }` + serve},
		{"values without an end", `fn main() { let v: usize = (0..).filter(|x| *x < 0).count();` + serve},
		{"signs", `fn main() { let x = ` + strings.Repeat("!", 20_000) + `true;` + serve},
		{"brackets", `fn main() { let x = ` + strings.Repeat("(", 5_000) + "1" + strings.Repeat(")", 5_000) + `;` + serve},
	} {
		dir := plant(t, "-- Procfile --\nweb: ./target/release/gate\n-- Cargo.toml --\n[package]\nname = \"gate\"\nversion = \"0.1.0\"\nedition = \"2021\"\n-- src/main.rs --\n"+c.source)
		began := time.Now()
		got := allOutcomes(run(t, dir, quotedEnv("")).Components[0].Starts)
		if took := time.Since(began); !strings.Contains(got, "8000") && got != "exits" && c.name != "brackets" && c.name != "signs" || took > 30*time.Second {
			t.Errorf("%s: %s after %v", c.name, got, took)
		}
	}
}
