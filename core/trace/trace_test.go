package trace_test

import (
	"maps"
	"path"
	"slices"
	"strings"
	"testing"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/trace"
	"ubique/core/value"
)

// files is a loader over files in memory: a relative import leads to the file of
// that name, one of Go to the folder behind the module's name, all else to a
// package.
type files struct {
	texts map[string]string
	read  map[string]*code.File
	order []*code.File
}

func (f *files) Resolve(from *code.File, module, _ string) (string, bool) {
	if from.Lang == code.Go {
		dir, ok := strings.CutPrefix(module, "dome/")
		for _, name := range f.Beside(dir) {
			if ok && strings.HasSuffix(name, ".go") {
				return name, true
			}
		}
		return "", false
	}
	base := module
	if from.Lang == code.Python {
		base = "./" + strings.ReplaceAll(strings.TrimLeft(module, "."), ".", "/")
	} else if !strings.HasPrefix(module, ".") {
		return "", false
	}
	p := path.Join(path.Dir(from.Name), base)
	for _, ext := range []string{"", ".js", ".py", ".json", "/index.js", "/__init__.py"} {
		if _, ok := f.texts[p+ext]; ok {
			return p + ext, true
		}
	}
	return "", false
}

func (f *files) File(name string) *code.File {
	if g, ok := f.read[name]; ok {
		return g
	}
	text, ok := f.texts[name]
	if !ok || code.LanguageOf(name) == code.None {
		return nil
	}
	g := code.Read(name, []byte(text), place.NewLines([]byte(text)))
	f.read[name] = g
	f.order = append(f.order, g)
	return g
}

func (f *files) Data(name string) *document.Node {
	text, ok := f.texts[name]
	if !ok || !strings.HasSuffix(name, ".json") {
		return nil
	}
	d, err := document.JSON(name, []byte(text), place.NewLines([]byte(text)), false)
	if err != nil {
		return nil
	}
	return d
}

func (f *files) Text(name string) (string, bool) {
	text, ok := f.texts[name]
	return text, ok
}

func (f *files) Folder(dir string) bool { return dir == "" || dir == "." || len(f.Beside(dir)) > 0 }

func (f *files) Beside(dir string) []string {
	var list []string
	for _, name := range slices.Sorted(maps.Keys(f.texts)) {
		if d := path.Dir(name); d == dir || d == "." && dir == "" {
			list = append(list, name)
		}
	}
	return list
}

func (f *files) Loaded() []*code.File                { return f.order }
func (f *files) Mentioning(_, _ string) []*code.File { return f.order }

// follow goes through a program, the first of the files, and gives what probe
// was called with, call by call, and how it ended.
func follow(t *testing.T, main string, texts map[string]string, env map[string]string, args ...string) (string, trace.Result) {
	t.Helper()
	l := &files{texts: texts, read: map[string]*code.File{}}
	f := l.File(main)
	if f == nil {
		t.Fatalf("%s cannot be read", main)
	}
	e := value.New(l, main)
	for _, a := range args {
		e.Args = append(e.Args, value.Text(a, place.Whole(main)))
	}
	r := trace.Run(e, f, value.Environ{Set: env}, func(v *value.Value) (note, stays bool) { return value.Tail(v.Text, 1) == "probe", false })
	var calls []string
	for _, c := range r.Calls {
		var parts []string
		for _, a := range c.Args {
			parts = append(parts, a.String())
		}
		calls = append(calls, strings.Join(parts, " "))
	}
	return strings.Join(calls, "; "), r
}

func TestPrograms(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ file, source, env, want string }{
		{"s.js", "let n = 0; for (let i = 0; i < 4; i++) { if (i === 2) continue; n += i; } probe(n);", "", "4"},
		{"s.js", "outer: for (const a of [1, 2]) { for (const b of [1, 2]) { if (b === 2) continue outer; if (a === 2) break outer; probe(a, b); } }", "", "1 1"},
		{"s.js", "let i = 0; do { i += 3 } while (i < 7); probe(i++, i, ++i);", "", "9 10 11"},
		{"s.js", "const { A = 'x', ...rest } = { B: 1, C: 2 }; probe(A, Object.keys(rest).join('-'));", "", `"x" "B-C"`},
		{"s.js", "class A { #p = 1; static of(p) { const a = new this(); a.#p = p; return a; } get p() { return this.#p; } } class B extends A { get p() { return super.p + 1; } } probe(B.of(4).p);", "", "5"},
		{"s.js", "const m = new Map([['a', 1]]); m.set('b', 2); probe([...m.values()].reduce((x, y) => x + y, 0), m.has('c'));", "", "3 false"},
		{"s.js", "async function f() { throw new RangeError('far'); } f().catch((e) => probe(e.message)).finally(() => probe('end'));", "", `"far"; "end"`},
		{"s.js", "switch (process.env.S) { case 'a': case 'b': probe(1); case 'c': probe(2); break; default: probe(3); }", "S=b", "1; 2"},
		{"s.js", "switch (process.env.S) { case 'a': probe(1); break; default: probe(3); }", "S=z", "3"},
		{"s.js", "function* g() { yield 1; yield* [2, 3]; } probe(...g());", "", "1 2 3"},
		{"s.js", "const o = { n: 3, f() { return [1].map(() => this.n)[0]; } }; probe(o.f(), o?.x?.y.z, o.x ?? 7);", "", "3 undefined 7"},
		{"s.js", "probe(/^(\\w+):(\\d+)$/.exec('dome:80')[2], 'a-b-c'.replace(/-/g, '+'), 'x1'.match(/y/));", "", `"80" "a+b+c" null`},
		{"s.js", "process.env.P ??= '5'; delete process.env.Q; probe(process.env.P, process.env.Q, 'Q' in process.env);", "Q=1", `"5" undefined false`},
		{"s.js", "setTimeout(() => probe(2), 10); probe(1);", "", "1; 2"},
		{"s.js", "something().then((x) => probe(x ? 1 : 2));", "", "…"},
		{"s.js", "db.connect(url, (err) => { if (err) throw err; probe(1); });", "", "1"},
		{"s.js", "emitter.on('error', () => probe(1)); probe(0);", "", "0"},
		{"s.py", "import os\nn = 0\nfor i in range(5):\n    if i == 1:\n        continue\n    if i == 4:\n        break\n    n += i\nelse:\n    n = 100\nprobe(n)\n", "", "5"},
		{"s.py", "import os\nx = {k: int(v) for k, v in os.environ.items() if k.startswith('P')}\nprobe(sorted(x)[0], x.get('Q', 3), len(x))\n", "PA=4 Z=1", `"PA" 3 1`},
		{"s.py", "class A:\n    n = 1\n    def __init__(self, n=None):\n        self.n = n or type(self).n\n    @property\n    def twice(self):\n        return self.n * 2\nclass B(A):\n    n = 5\n    def __init__(self):\n        super().__init__()\nprobe(B().twice, A(3).twice)\n", "", "10 6"},
		{"s.py", "def f(a, *rest, b=2, **more):\n    return a, len(rest), b, sorted(more)\nprobe(*f(1, 2, 3, b=4, c=5))\n", "", "1 2 4 …"},
		{"s.py", "import os\ntry:\n    p = int(os.environ['P'])\nexcept KeyError:\n    p = 1\nexcept (ValueError, TypeError) as e:\n    p = 2\nfinally:\n    probe(p)\n", "P=x", "2"},
		{"s.py", "from enum import Enum\nclass S(Enum):\n    A = 'a'\n    B = 'b'\nprobe(S('b').name, S['A'].value, [s.value for s in S][1])\n", "", `"B" "a" "b"`},
		{"s.py", "def g():\n    yield 1\n    yield 2\nprobe(sum(g()), *[x for x in g()], '%s:%d' % ('h', 3), f'{1 + 1}', 7 // 2, 1 < 2 < 2)\n", "", `3 1 2 "h:3" "2" 3 false`},
		{"s.py", "from dataclasses import dataclass, field, replace\n@dataclass\nclass D:\n    h: str\n    p: list = field(default_factory=list)\nd = replace(D('x'), h='y')\nprobe(d.h, len(d.p))\n", "", `"y" 0`},
		{"s.py", "import sys\nn = 0\ndef set():\n    global n\n    n = len(sys.argv)\nset()\nprobe(n, sys.argv[1:])\n", "", "2 …"},
		{"m.go", "package main\n\nimport \"os\"\n\ntype t struct{ n int }\n\nfunc (x *t) add(k int) *t { x.n += k; return x }\n\nfunc main() {\n\tx := &t{1}\n\tfor i := 0; i < 3; i++ {\n\t\tif i == 1 {\n\t\t\tcontinue\n\t\t}\n\t\tx.add(i)\n\t}\n\tif v, ok := os.LookupEnv(\"P\"); ok {\n\t\tx.n = len(v)\n\t}\n\tprobe(x.n, 7/2)\n}\n", "", "3 3"},
		{"m.go", "package main\n\nimport \"strconv\"\n\nfunc f(s string) (n int, err error) { return strconv.Atoi(s) }\n\nfunc main() {\n\tm := map[string]int{\"a\": 1}\n\tm[\"b\"]++\n\tn, err := f(\"x\")\n\t_, ok := m[\"c\"]\n\tprobe(n, err == nil, ok, len(m))\n}\n", "", "0 false false 2"},
		{"m.go", "package main\n\ntype shape interface{ sides() int }\ntype base struct{ n int }\n\nfunc (b base) sides() int { return b.n }\n\ntype square struct{ base }\n\nfunc main() {\n\tvar s shape = square{base{4}}\n\tfor i, x := range []int{5, 6} {\n\t\tprobe(i, x, s.sides())\n\t}\n\tselect {}\n}\n", "", "0 5 4; 1 6 4"},
	} {
		env := map[string]string{}
		for _, f := range strings.Fields(c.env) {
			k, v, _ := strings.Cut(f, "=")
			env[k] = v
		}
		if got, r := follow(t, c.file, map[string]string{c.file: c.source}, env, "up"); got != c.want {
			t.Errorf("%s\ngives %s, not %s (%s%s)", c.source, got, c.want, r.Reason, r.Ended)
		}
	}
}

// TestModules follows programs over their files.
func TestModules(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		main, want string
		texts      map[string]string
	}{
		{"a.js", "1 2", map[string]string{"a.js": "import { n, up } from './b.js'; const was = n; up(); probe(was, n);", "b.js": "export let n = 1; export const up = () => { n++; };"}},
		{"a.js", "3 \"x\"", map[string]string{"a.js": "const b = require('./b'); probe(b.n, b.d.name);", "b.js": "exports.n = 3; exports.d = require('./d.json');", "d.json": `{"name": "x"}`}},
		{"a.py", "4 \"a\"", map[string]string{"a.py": "from b import n\nimport c.d\nprobe(n, c.d.who)\n", "b.py": "n = 4\n", "c/__init__.py": "", "c/d.py": "who = 'a'\n"}},
		{"main.go", `"8" "up"`, map[string]string{"main.go": "package main\n\nimport \"dome/conf\"\n\nfunc main() { probe(conf.Get().Port, state) }\n", "state.go": "package main\n\nvar state string\n\nfunc init() { state = \"up\" }\n", "conf/conf.go": "package conf\n\ntype C struct{ Port string }\n\nvar c = &C{}\n\nfunc init() { c.Port = \"8\" }\n\nfunc Get() *C { return c }\n"}},
	} {
		if got, r := follow(t, c.main, c.texts, nil); got != c.want {
			t.Errorf("%v\ngives %s, not %s (%s%s)", c.texts, got, c.want, r.Reason, r.Ended)
		}
	}
}

// TestEnds looks at how programs end that do not come to their end.
func TestEnds(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ file, source, ended, reason string }{
		{"s.js", "if (!process.env.KEY) { console.error('no key'); process.exit(1); } probe(1);", "the program ends itself", ""},
		{"s.js", "throw new Error('no dome');", "an error that nothing catches: Error: no dome", ""},
		{"s.js", "(async () => { await Promise.reject(new Error('late')); })();", "an error that nothing catches: Error: late", ""},
		{"s.js", "if (somewhere()) probe(1);", "", "a condition that is not known: somewhere()"},
		{"s.js", "while (true) {}", "", "it takes too many steps to follow"},
		{"s.js", "let s = 'x'; for (;;) s += s;", "", "a text that is too long"},
		{"s.js", "const a = []; a.push(a); const f = () => f(); f();", "", "functions that call each other without end"},
		{"s.py", "import os\nprobe(os.environ['PORT'])\n", "an error that nothing catches: KeyError: PORT", ""},
		{"s.py", "x = []\nwhile True:\n    x.append(x)\n", "", "it takes too much to follow"},
		{"s.py", "raise SystemExit(2)\n", "the program ends itself", ""},
		{"m.go", "package main\n\nimport \"log\"\n\nfunc main() { log.Fatal(\"no dome\") }\n", "the program ends itself", ""},
		{"m.go", "package main\n\nfunc main() { main() }\n", "", "functions that call each other without end"},
	} {
		got, r := follow(t, c.file, map[string]string{c.file: c.source}, nil)
		if r.Ended != c.ended || r.Reason != c.reason || got != "" {
			t.Errorf("%s\nends %q, is given up by %q and calls %q", c.source, r.Ended, r.Reason, got)
		}
	}
}

// TestSelf hands over what holds itself.
func TestSelf(t *testing.T) {
	t.Parallel()
	got, r := follow(t, "s.js", map[string]string{"s.js": "const a = { n: 1 }; a.self = a; const e = other(a); a.e = e; e.on(a); probe(a, e);"}, nil)
	if len(r.Calls) != 1 || !strings.HasPrefix(got, "…") {
		t.Errorf("it calls %q (%s)", got, r.Reason)
	}
}

func FuzzRun(f *testing.F) {
	f.Add("const a = [1, 2].map((x) => x * 2); for (const b of a) probe(b);")
	f.Add("class A { static #x = 1; get y() { return A.#x; } } probe(new A().y);")
	f.Fuzz(func(t *testing.T, source string) {
		for _, name := range []string{"s.js", "s.py", "s.go", "s.rb", "s.php", "S.java"} {
			follow(t, name, map[string]string{name: source}, map[string]string{"PORT": "1"})
		}
	})
}
