package code_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"ubique/core/code"
	"ubique/core/place"
)

func read(name, text string) *code.File {
	return code.Read(name, []byte(text), place.NewLines([]byte(text)))
}

// calls lists what is called, as written, in the order of the source.
func calls(f *code.File) []string {
	var list []string
	for _, s := range f.Calls {
		list = append(list, f.Text(s.Node.Kid(0)))
	}
	slices.Sort(list)
	return list
}

func imports(f *code.File) []string {
	var list []string
	for _, s := range f.Imports {
		var names []string
		for _, k := range s.Node.Kids {
			n := k.Name
			if k.Alias != "" && k.Alias != k.Name {
				n += ">" + k.Alias
			}
			names = append(names, n)
		}
		text := s.Node.Name
		if len(names) > 0 {
			text += "(" + strings.Join(names, ",") + ")"
		}
		if s.Node.Flag&code.TypeOnly != 0 {
			text += " types"
		}
		if s.InTry {
			text += " try"
		}
		list = append(list, text)
	}
	return list
}

func check(t *testing.T, what string, got, want []string) {
	t.Helper()
	slices.Sort(got)
	slices.Sort(want)
	if !slices.Equal(got, want) {
		t.Errorf("%s\n\tare    %s\n\twanted %s", what, strings.Join(got, " | "), strings.Join(want, " | "))
	}
}

func TestJavaScriptLexing(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"comments and texts hold no calls":     {"// listen(1)\n/* listen(2)\n */ const s = 'listen(3)' + \"listen(4)\" + `listen(5)`; go()", []string{"go"}},
		"a template's expressions are code":    {"const u = `a ${f(`b ${g()}`)} c`", []string{"f", "g"}},
		"a regular expression is no comment":   {"const r = /\\/\\/[/*]/g.test(s); f(r)", []string{"/\\/\\/[/*]/g.test", "f"}},
		"a division is no regular expression":  {"const a = b / c; f(a / d); g(1 /2/ 3)", []string{"f", "g"}},
		"a regular expression after a bracket": {"if (x) /re'/.exec(y); f()", []string{"/re'/.exec", "f"}},
		"optional chaining and private fields": {"class A { #p = f(); get() { return this.#p?.q?.(g()) } }", []string{"f", "g", "this.#p?.q"}},
		"numbers, bigints, separators":         {"f(1_000n, .5e-3, 0xff, 1..toFixed())", []string{"1..toFixed", "f"}},
		"a hash bang":                          {"#!/usr/bin/env node\nf()", []string{"f"}},
		"line ends end statements":             {"const a = b\nf()\nlet c = d\n;[1].forEach(g)", []string{"[1].forEach", "f"}},
		"return and its line end":              {"function a() { return\nf() }", []string{"f"}},
		"labels and loops":                     {"outer: for (const x of f()) { for (let i = 0; i < g(); i++) { if (h()) continue outer } }", []string{"f", "g", "h"}},
		"generators, async and spread":         {"async function* a() { yield* f(); await g(...h()) }", []string{"f", "g", "h"}},
		"arrows of every form":                 {"const a = x => f(x), b = async (y, { z = 1 } = {}) => { await g(y) }, c = () => ({ k: h() })", []string{"f", "g", "h"}},
		"new with and without arguments":       {"const a = new A, b = new B.C(f()), d = new (g())()", []string{"A", "B.C", "f", "g", "g()"}},
		"an unclosed text ends with its line":  {"const a = 'abc\nf()", []string{"f"}},
		"an escape at the end of the file":     {"f(); '\\", []string{"f"}},
	} {
		t.Run(name, func(t *testing.T) { check(t, "calls", calls(read("a.ts", c.text)), c.want) })
	}
}

func TestTypeScript(t *testing.T) {
	f := read("a.ts", `
import express, { type Request, Response as R } from "express";
import type { Config } from "./types";
import fs = require("fs");
export * from "./all";
export { a as b } from "./some";
declare module "x" { interface Y { listen(port: number): void } }
abstract class Server<T extends object = {}> extends Base<T> implements Runs {
  private readonly port: number = Number(process.env.PORT!) ?? 3000;
  static instance?: Server<any>;
  @inject() protected db!: Db;
  constructor(private host: string, public options: Options = defaults()) { super(); }
  async start<K>(this: Server<T>, handler: (a: K) => Promise<void>): Promise<void> {
    const x = <Foo>bar(), y = baz as unknown as Array<Map<string, number>>;
    this.app.listen(this.port satisfies number, (err?: Error): void => { done(err); });
  }
  overload(a: string): void;
  overload(a: any) { inner(a); }
}
enum Level { Low = 1, High = level() }
namespace N { export const v = n(); }
type A = { listen: (p: number) => void } | typeof q;
function assertIsString(val: any): asserts val is string { check(val); }
const generic = id<string>("x"), f2 = <T,>(x: T) => use(x);
let v = a < b && c > d;
`)
	check(t, "calls", calls(f), []string{"Number", "defaults", "super", "bar", "this.app.listen", "done", "inner", "level", "n", "check", "id", "use", "inject", "require"})
	check(t, "imports", imports(f), []string{"express(default>express,Request,Response>R)", "./types(Config) types", "./all(*)", "./some(a>b)", "fs"})
}

func TestMarkup(t *testing.T) {
	f := read("a.tsx", `
export function Sky({ stars }: Props) {
  return (
    <ul className="sky" onClick={() => pick(1)}>
      {stars.map((s) => <Star key={s.id} {...rest(s)} title={"it's > listen(3)"} />)}
      <>don't listen(1) {/* listen(2) */} here</>
    </ul>
  );
}
const cmp = a < b, g = f<T>(x);
`)
	check(t, "calls", calls(f), []string{"pick", "stars.map", "rest", "f"})
}

func TestJavaScriptImportsAndExports(t *testing.T) {
	f := read("a.mjs", `
import a, * as ns from "a";
import { b as c, default as d } from './b.js';
import "side-effect";
const e = require("e"), { f: g } = require('f');
const lazy = () => import("lazy");
let maybe;
try { maybe = require("maybe"); } catch (err) { maybe = require("other"); }
export const port = 1, { host } = config;
export default class Server {}
export function start() {}
export { g as start2 };
require(name);
require.resolve("resolved");
`)
	check(t, "imports", imports(f), []string{"a(default>a,*>ns)", "./b.js(b>c,default>d)", "side-effect", "e", "f", "lazy", "maybe try", "other try", "resolved"})
	var names []string
	for n := range f.Exports {
		names = append(names, n)
	}
	check(t, "exports", names, []string{"port", "host", "default", "start", "start2"})

	f = read("b.js", "module.exports = { a };\nmodule.exports.b = 1;\nexports.c = exports.d = 2;\nexports['e'] = 3;")
	names = nil
	for n := range f.Exports {
		names = append(names, n)
	}
	check(t, "exports of CommonJS", names, []string{"=", "b", "c", "d", "e"})
}

func TestPythonLexing(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"comments, texts and docstrings":   {"# run(1)\n'''run(2)\nrun(3)'''\ns = \"run(4)\" 'run(5)' r'\\'\nf(s)", []string{"f"}},
		"formatted texts are code":         {"f(f\"a {g(1)!r:>8} {{not()}} {d['k']}\")", []string{"f", "g"}},
		"brackets join lines":              {"f(\n    a,\n    b=[\n        g(),\n    ],\n)\nh()", []string{"f", "g", "h"}},
		"a backslash joins lines":          {"x = f() + \\\n    g()\nh()", []string{"f", "g", "h"}},
		"indentation with tabs and blanks": {"def a():\n\tif b:\n\t\tf()\n\n\t# comment\n\tg()\nh()", []string{"f", "g", "h"}},
		"decorators and lambdas":           {"@f(1)\nclass A(B, metaclass=g()):\n    @property\n    def x(self): return (lambda y: h(y))(1)", []string{"lambda y: h(y)", "f", "g", "h"}},
		"comprehensions":                   {"x = [f(a) for a in g() if h(a)]\ny = {k(): v for v in ()}", []string{"f", "g", "h", "k"}},
		"walrus, ternary, unpacking":       {"if (n := f()) > 1: g(*a, **b(n), c=d if e else h())", []string{"b", "f", "g", "h"}},
		"match is a name too":              {"match = f(1)\nmatch(2)\nprint(match)\nmatch x:\n    case g.A | 1 if h(): k()\n    case _: l()", []string{"f", "h", "k", "l", "match", "print"}},
		"async":                            {"async def a():\n    async with f() as x, g():\n        await h(x)\n    async for y in k(): pass", []string{"f", "g", "h", "k"}},
		"semicolons and one-line blocks":   {"import os; f(); g()\nif x: h()", []string{"f", "g", "h"}},
		"types":                            {"type A = list[int]\ndef f[T: int](a: list['g()'] = h()) -> dict[str, int]: ...\nx: int = k()", []string{"h", "k"}},
		"a byte order mark":                {"\ufefff()", []string{"f"}},
		"an unclosed text":                 {"a = 'abc\nf()", []string{"f"}},
	} {
		t.Run(name, func(t *testing.T) { check(t, "calls", calls(read("a.py", c.text)), c.want) })
	}
}

func TestPythonImports(t *testing.T) {
	f := read("a.py", `
import os, os.path as p
from a.b import c, d as e
from . import f
from ..g.h import (
    i,  # comment
    j as k,
)
from l import *
try:
    import m
except ImportError:
    m = None
if TYPE_CHECKING:
    from n import o
def inside():
    import q
`)
	check(t, "imports", imports(f), []string{"os(*>os)", "os.path(*>p)", "a.b(c,d>e)", ".(f)", "..g.h(i,j>k)", "l(*)", "m(*>m) try", "n(o)", "q(*>q)"})
	for _, s := range f.Imports {
		if s.Node.Name == "n" && (len(s.Guards) != 1 || s.Guards[0].Test.Dotted() != "TYPE_CHECKING") {
			t.Error("the guard of an import for types is not seen")
		}
	}
	if len(f.Stars) != 1 || f.Stars[0].Name != "l" {
		t.Errorf("the stars are %v", f.Stars)
	}
}

func TestGuardsAndScopes(t *testing.T) {
	f := read("a.js", `
if (a) { one(); } else if (b) { two(); } else { three(); }
c && four();
d || five();
e ? six() : seven();
function early() { if (x) return; eight(); }
switch (g) { case 1: nine(); break; default: ten(); }
try { eleven(); } catch { twelve(); }
`)
	want := map[string]string{"one": "a", "two": "!a b", "three": "!a !b", "four": "c", "five": "!d", "six": "e", "seven": "!e", "eight": "!x", "nine": "g === 1", "ten": "!(g === 1)", "eleven": "", "twelve": "(error)"}
	for _, s := range f.Calls {
		var parts []string
		for _, g := range s.Guards {
			text := ""
			switch {
			case g.Test.Is(code.Try):
				text = "(error)"
			case g.Test.Is(code.Binary) && g.Test.Name == "===":
				text = f.Text(g.Test.Kid(0)) + " === " + f.Text(g.Test.Kid(1))
				if g.Not {
					text = "(" + text + ")"
				}
			default:
				text = f.Text(g.Test)
			}
			if g.Not {
				text = "!" + text
			}
			parts = append(parts, text)
		}
		name := f.Text(s.Node.Kid(0))
		if got := strings.Join(parts, " "); got != want[name] {
			t.Errorf("%s runs under %q, not %q", name, got, want[name])
		}
	}
	g := read("b.py", "class A:\n    x = 1\n    def m(self, y=2):\n        z = 3\nw: int = 4\n")
	a := g.Classes["A"]
	if a == nil || g.Inside[a] == nil || len(g.Inside[a].Names["x"]) != 1 || len(g.Inside[a].Names["m"]) != 1 {
		t.Error("the names of a class are not known")
	}
	if len(g.Top.Names["w"]) != 1 || len(g.Top.Names["x"]) != 0 || len(g.Top.Names["z"]) != 0 {
		t.Error("names are bound in a scope that is not theirs")
	}
}

func TestPlaces(t *testing.T) {
	f := read("a.js", "const s = \"größe\"; app.listen(\n  3000)\n")
	for _, s := range f.Calls {
		at := f.At(s.Node)
		if got := fmt.Sprintf("%d:%d-%d:%d", at.Line, at.Col, at.EndLine, at.EndCol); got != "1:20-2:8" {
			t.Errorf("the call is at %s", got)
		}
	}
}

func TestGoSource(t *testing.T) {
	f := read("a.go", "package main\n\nimport (\n\t\"net/http\"\n\tenv \"os\"\n)\n\nvar port = env.Getenv(\"PORT\")\n\nfunc main() {\n\tif port == \"\" {\n\t\tport = \"8080\"\n\t}\n\thttp.ListenAndServe(\":\"+port, nil)\n}\n")
	check(t, "calls", calls(f), []string{"env.Getenv", "http.ListenAndServe"})
	check(t, "imports", imports(f), []string{"net/http(*>http)", "os(*>env)"})
	if len(f.Top.Names["port"]) == 0 {
		t.Error("a package variable is not bound")
	}
	if g := read("b.go", "package main\nfunc {"); g.Body == nil {
		t.Error("broken source gives no file")
	}
}

func TestLanguages(t *testing.T) {
	for name, want := range map[string]code.Language{"a.js": code.JSX, "a.mts": code.TypeScript, "a.tsx": code.JSX, "b/c.py": code.Python, "a.go": code.Go, "Makefile": code.None, "a.b/c": code.None, ".js": code.JSX} {
		if got := code.LanguageOf(name); got != want {
			t.Errorf("%s is taken for %v, not %v", name, got, want)
		}
	}
}

func TestDeepNestingEnds(t *testing.T) {
	for _, text := range []string{strings.Repeat("(", 50_000), strings.Repeat("[", 50_000), strings.Repeat("{", 50_000), strings.Repeat("f(", 20_000), strings.Repeat("`${", 5_000), strings.Repeat("if(a)", 20_000), strings.Repeat("a?", 20_000), strings.Repeat("<a>", 20_000), strings.Repeat("!", 50_000), strings.Repeat("x=>", 20_000), strings.Repeat("class A{", 5_000)} {
		read("a.tsx", text)
		read("a.py", text)
	}
	read("a.py", strings.Repeat("if x:\n ", 3_000))
	read("a.py", strings.Repeat("f'{", 3_000))
	read("a.py", strings.Repeat("lambda:", 20_000))
	read("a.py", strings.Repeat("not ", 50_000))
	// What is read twice at each level, or stands in two places of the tree, has
	// no end after some 30 of them.
	for name, part := range map[string]string{
		"a.rb": `("/") { |_, oc`, "b.rb": "@where=x (x, ", "c.rb": "(x, pub{x`${fn struct#{", "d.rb": `x, @y = "#{f { x, @z = "`,
		"a.java": "** ]x=> ?::{ for", "a.php": "foreach (f(function () { ", "a.js": "'async else=> ", "a.tsx": "case case not async return =>", "a.rs": "`${catch case {x$xclass |x, ",
	} {
		read(name, strings.Repeat(part, 60))
	}
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"const a = `x ${b}`; a?.b(c => /d/.e)", "import x from 'y'; export default class { #a = 1 }", "switch (a) { case 1: b(); default: c() }", "<A b={c} {...d}>e</A>", "type A<B> = C extends D ? E : F"} {
		f.Add(s, uint8(0))
	}
	for _, s := range []string{"def f(a, *, b=1):\n    return f'{a!r:{b}}'\n", "match x:\n case {'a': 1}: pass", "0= =", "class A(B):\n  x: int = 1"} {
		f.Add(s, uint8(1))
	}
	f.Fuzz(func(t *testing.T, text string, lang uint8) {
		names := []string{"a.ts", "a.py", "a.tsx", "a.go"}
		file := read(names[int(lang)%len(names)], text)
		for _, s := range file.Calls {
			if s.Node.Off < 0 || int(s.Node.End) > len(text) || s.Node.Off > s.Node.End {
				t.Fatalf("a call spans %d to %d of %d bytes", s.Node.Off, s.Node.End, len(text))
			}
			file.Text(s.Node)
		}
	})
}
