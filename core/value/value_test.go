package value_test

import (
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"
	"testing"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/value"
)

// files is a loader over files in memory: a relative import leads to the file
// of that name, all else to a package.
type files struct {
	texts map[string]string
	read  map[string]*code.File
	order []*code.File
}

func load(texts map[string]string) *files { return &files{texts: texts, read: map[string]*code.File{}} }

func (f *files) Resolve(from *code.File, module, name string) (string, bool) {
	base := module
	if strings.HasPrefix(module, ".") && !strings.HasPrefix(module, "./") && !strings.HasPrefix(module, "../") {
		base = "./" + strings.ReplaceAll(strings.TrimLeft(module, "."), ".", "/")
	} else if from.Lang == code.Python {
		base = "./" + strings.ReplaceAll(module, ".", "/")
	} else if !strings.HasPrefix(module, ".") {
		return "", false
	}
	p := path.Join(path.Dir(from.Name), base)
	for _, ext := range []string{"", ".js", ".ts", ".py", ".json", "/index.js", "/__init__.py"} {
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

func (f *files) Text(string) (string, bool) { return "", false }

func (f *files) Folder(dir string) bool { return dir == "" || dir == "." || len(f.Beside(dir)) > 0 }

func (f *files) Beside(dir string) []string {
	var list []string
	for _, name := range slices.Sorted(maps.Keys(f.texts)) {
		if rest, ok := strings.CutPrefix(name, dir); ok && !strings.Contains(strings.TrimPrefix(rest, "/"), "/") {
			list = append(list, name)
		}
	}
	return list
}

func (f *files) Loaded() []*code.File                { return f.order }
func (f *files) Mentioning(_, _ string) []*code.File { return f.order }

// argument evaluates the first argument of the call probe(…) in a file.
func argument(t *testing.T, texts map[string]string, main string) *value.Value {
	t.Helper()
	l := load(texts)
	f := l.File(main)
	if f == nil {
		t.Fatalf("%s cannot be read", main)
	}
	e := value.New(l, main)
	for _, site := range f.Calls {
		if site.Node.Kid(0).Dotted() == "probe" {
			return e.Expr(site.Node.Kid(1), site.Scope)
		}
	}
	t.Fatalf("%s calls no probe", main)
	return nil
}

// env reads A=1 B=2 as an environment.
func env(text string) value.Environ {
	set := map[string]string{}
	for _, f := range strings.Fields(text) {
		k, v, _ := strings.Cut(f, "=")
		set[k] = v
	}
	return value.Environ{Set: set}
}

func outcome(o value.Outcome) string {
	switch {
	case o.Raise:
		return "raises"
	case o.Kind == value.Unknown:
		return "unknown"
	case o.Kind == value.List:
		var parts []string
		for _, x := range o.List {
			parts = append(parts, outcome(x))
		}
		return "[" + strings.Join(parts, " ") + "]"
	case o.Kind == value.Str:
		return fmt.Sprintf("%q", o.Text)
	}
	return o.String()
}

type valueCase struct{ code, env, want string }

func evaluate(t *testing.T, name string, cases []valueCase) {
	t.Helper()
	for _, c := range cases {
		v := argument(t, map[string]string{name: c.code}, name)
		if got := outcome(v.Under(env(c.env))); got != c.want {
			t.Errorf("under %q\n%s\ncomes to %s, not %s", c.env, c.code, got, c.want)
		}
	}
}

func TestJavaScript(t *testing.T) {
	evaluate(t, "a.ts", []valueCase{
		{"probe(3000)", "", "3000"},
		{"probe(0x1F90)", "", "8080"},
		{"probe(3_000)", "", "3000"},
		{"probe('30' + 1)", "", `"301"`},
		{"probe(process.env.PORT)", "PORT=1", `"1"`},
		{"probe(process.env.PORT)", "", "undefined"},
		{"probe(process.env['PORT'] || 3000)", "", "3000"},
		{"probe(process.env.PORT || 3000)", "PORT=", "3000"},
		{"probe(process.env.PORT ?? 3000)", "PORT=", `""`},
		{"probe(process.env.PORT! as unknown as number)", "PORT=5", `"5"`},
		{"probe(+process.env.PORT)", "PORT=5", "5"},
		{"probe(+process.env.PORT)", "", "NaN"},
		{"probe(Number(process.env.PORT) || 80)", "PORT=x", "80"},
		{"probe(parseInt(process.env.PORT, 10) || 80)", "PORT=81a", "81"},
		{"probe(Number.parseInt(process.env.PORT ?? '7', 10))", "", "7"},
		{"probe(`${process.env.HOST || 'a'}:${process.env.PORT || 1}`)", "HOST=b", `"b:1"`},
		{"const { PORT = 3000, HOST: host = 'h' } = process.env; probe(PORT)", "", "3000"},
		{"const { PORT = 3000, HOST: host = 'h' } = process.env; probe(host)", "HOST=g", `"g"`},
		{"const env = process.env; const { A } = env; probe(A)", "A=1", `"1"`},
		{"const [a, b] = [process.env.A, 2]; probe(b)", "", "2"},
		{"let p = 1; if (process.env.P) { p = 2 } probe(p)", "", "1"},
		{"let p = 1; if (process.env.P) { p = 2 } probe(p)", "P=x", "2"},
		{"let p; if (process.env.P === 'a') p = 1; else if (process.env.P === 'b') p = 2; else p = 3; probe(p)", "P=b", "2"},
		{"let p; if (process.env.P === 'a') p = 1; else if (process.env.P === 'b') p = 2; else p = 3; probe(p)", "P=c", "3"},
		{"var p = process.env.NODE_ENV === 'production' ? 80 : 3000; probe(p)", "NODE_ENV=production", "80"},
		{"let p; switch (process.env.E) { case 'a': case 'b': p = 1; break; case 'c': p = 2; break; default: p = 3 } probe(p)", "E=b", "1"},
		{"let p; switch (process.env.E) { case 'a': case 'b': p = 1; break; case 'c': p = 2; break; default: p = 3 } probe(p)", "E=c", "2"},
		{"let p; switch (process.env.E) { case 'a': { p = 1; break } default: p = 3 } probe(p)", "E=z", "3"},
		{"function f(e) { switch (e) { case 'a': return 1; default: return 2 } } probe(f(process.env.E))", "E=a", "1"},
		{"function f(e) { switch (e) { case 'a': return 1 } return 9 } probe(f(process.env.E))", "E=b", "9"},
		{"function port(def) { return process.env.PORT || def } probe(port(9))", "", "9"},
		{"const port = (def = 4) => process.env.PORT || def; probe(port())", "", "4"},
		{"function f({ port = 1, host } = {}) { return port } probe(f({ port: process.env.P }))", "", "1"},
		{"function n(v) { const p = parseInt(v, 10); if (isNaN(p)) return v; if (p >= 0) return p; return false } probe(n(process.env.PORT || '3000'))", "PORT=abc", `"abc"`},
		{"function n(v) { const p = parseInt(v, 10); if (isNaN(p)) return v; if (p >= 0) return p; return false } probe(n(process.env.PORT || '3000'))", "", "3000"},
		{"const c = { http: { port: process.env.PORT || 1 } }; probe(c.http.port)", "", "1"},
		{"const c = { a: 1, ...(process.env.P && { a: 2 }) }; probe(c.a)", "P=1", "2"},
		{"const c = { a: 1, ...(process.env.P ? { a: 2 } : {}) }; probe(c.a)", "", "1"},
		{"const all = { dev: { p: 1 }, prod: { p: 2 } }; probe(all[process.env.E || 'dev'].p)", "E=prod", "2"},
		{"const all = { dev: { p: 1 }, prod: { p: 2 } }; probe(all[process.env.E || 'dev'].p)", "", "1"},
		{"class C { port = process.env.PORT ?? 5; static get() { return new C() } } probe(C.get().port)", "", "5"},
		{"class C { constructor(o) { this.p = o.port || 6 } } probe(new C({ port: process.env.P }).p)", "P=7", `"7"`},
		{"class C { get port() { return Number(process.env.PORT) || 8 } } probe(new C().port)", "", "8"},
		{"class C { constructor(private readonly port: number) {} } const c = new C(9); probe(c.port)", "", "9"},
		{"const o = { get port() { return process.env.PORT || 3 } }; probe(o.port)", "", "3"},
		{"enum Ports { Web = 8080 } probe(Object.freeze({ p: 1 }).p)", "", "1"},
		{"const v = { port: process.env.PORT || 3 }; const c = { get<K extends keyof typeof v>(k: K): (typeof v)[K] { return v[k]; } }; probe(c.get('port'))", "", "3"},
		{"probe(Object.assign({ a: 1, b: 2 }, { a: process.env.A }).a)", "A=3", `"3"`},
		{"probe(Object.assign({ a: 1, b: 2 }, { a: process.env.A }).b)", "", "2"},
		{"probe(Math.max(Number(process.env.A) || 0, 5))", "A=3", "5"},
		{"probe([process.env.A, process.env.B, '6'].find(Boolean))", "B=7", `"7"`},
		{"probe('A' in process.env ? 1 : 2)", "A=", "1"},
		{"const c = {}; c.port = process.env.PORT || 9; probe(c.port)", "", "9"},
		{"const c = { port: 1 }; if (process.env.PORT) { c.port = Number(process.env.PORT) } probe(c.port)", "PORT=2", "2"},
		{"const c = { port: 1 }; if (process.env.PORT) { c.port = Number(process.env.PORT) } probe(c.port)", "", "1"},
		{"const c = { a: 1 }; Object.assign(c, { port: process.env.PORT ?? 3 }); probe(c.port)", "", "3"},
		{"const c = {}; for (const s of sources) { Object.assign(c, s) } probe(c.port)", "", "unknown"},
		{"const c = {}; Object.keys(process.env).forEach((k) => { c[k] = process.env[k] }); probe(c.port)", "", "unknown"},
		{"function f() { const c = {}; c.port = 4; return c } const c = { port: 5 }; probe(f().port)", "", "4"},
		{"const c = { port: 1 }; probe(c.port); c.port = 2", "", "1"},
		{"probe(process.env.npm_package_name)", "", "unknown"},
		{"module.exports = { dev: 1, prod: 2 }[process.env.E || 'dev']; probe(module.exports)", "E=prod", "2"},
		{"const c = { get: () => 8 }; probe(c.get('x'))", "", "8"},
		{"probe(process.env.A && process.env.B)", "A=1 B=2", `"2"`},
		{"probe(!process.env.A)", "", "true"},
		{"probe(process.env.A !== undefined)", "A=", "true"},
		{"probe(typeof process.env.A === 'string')", "A=1", "true"},
		{"probe(1 + 2 * 3)", "", "7"},
		{"probe([1, 2, 3].length)", "", "3"},
		{"const [h, p] = (process.env.AT || 'sky:1').split(':'); probe(p)", "", `"1"`},
		{"const [h, p] = (process.env.AT || 'sky:1').split(':'); probe(p)", "AT=x", "undefined"},
		{"probe(~~process.env.PORT || 9)", "PORT=7.5", "7"},
		{"probe(~~process.env.PORT || 9)", "", "9"},
		{"class S { static get port() { return S.#of('PORT') } static #of(n) { return process.env[n] } }\nprobe(S.port)", "PORT=1", `"1"`},
		{"probe(process.env.HOSTS.split(','))", "HOSTS=a,b", `["a" "b"]`},
		{"probe('ABC'.toLowerCase())", "", `"abc"`},
		{"probe(JSON.parse(process.env.ON || 'false'))", "", "false"},
		{"process.env.PORT = process.env.PORT || '77'; probe(process.env.PORT)", "", `"77"`},
		{"process.env.PORT = process.env.PORT || '77'; probe(process.env.PORT)", "PORT=5", `"5"`},
		{"probe(import.meta.env)", "", ""},
		{"probe(Deno.env.get('PORT') ?? 8000)", "", "8000"},
		{"probe(Bun.env.PORT ?? 8000)", "PORT=2", `"2"`},
		{"import { z } from 'zod'; const e = z.object({ PORT: z.coerce.number().default(4) }).parse(process.env); probe(e.PORT)", "", "4"},
		{"import { z } from 'zod'; const e = z.object({ PORT: z.coerce.number() }).parse(process.env); probe(e.PORT)", "PORT=x", "raises"},
		{"import { cleanEnv, port } from 'envalid'; const e = cleanEnv(process.env, { PORT: port({ default: 4 }) }); probe(e.PORT)", "PORT=", "raises"},
		{"const env = require('env-var'); probe(env.get('PORT').default('5').asPortNumber())", "", "5"},
		{"const env = require('env-var'); probe(env.get('PORT').required().asPortNumber())", "", "raises"},
		{"const c = require('convict')({ a: { port: { default: 6, env: 'PORT', format: 'port' } } }); probe(c.get('a.port'))", "PORT=7", "7"},
		{"const app = require('express')(); app.set('port', process.env.PORT || 3); probe(app.get('port'))", "", "3"},
		{"import { env } from 'node:process'; probe(env.PORT ?? 5)", "", "5"},
		{"probe(somewhere.else)", "", "unknown"},
		{"probe(f()); function f() { return f() }", "", "unknown"},
		{"let p = p || 3; probe(p)", "", "unknown"},
		{"for (const p of [1, 2]) { probe(p) }", "", "unknown"},
		{"probe(fetchPort().then(x => x))", "", "unknown"},
	})
}

func TestPython(t *testing.T) {
	evaluate(t, "a.py", []valueCase{
		{"probe(8000)", "", "8000"},
		{"import os\nprobe(os.environ['PORT'])", "", "raises"},
		{"import os\nprobe(os.environ.get('PORT'))", "", "null"},
		{"import os\nprobe(int(os.environ.get('PORT', 8000)))", "", "8000"},
		{"import os\nprobe(int(os.environ.get('PORT', '8000')))", "PORT=", "raises"},
		{"import os\nprobe(int(os.getenv('PORT') or 8000))", "PORT=", "8000"},
		{"from os import environ, getenv as g\nprobe(g('A', environ.get('B', 'c')))", "B=2", `"2"`},
		{"from os import environ as e\nprobe(e.get('A', 'x') + '!')", "", `"x!"`},
		{"import os\nprobe(f\"{os.environ.get('H', '0.0.0.0')}:{os.environ.get('P', 80)}\")", "P=1", `"0.0.0.0:1"`},
		{"import os\nprobe('%s:%d' % ('h', 5))", "", `"h:5"`},
		{"import os\nprobe('127.0.0.1:%s' % os.getenv('P', '9'))", "", `"127.0.0.1:9"`},
		{"import os\nprobe('{}:{}'.format('h', os.getenv('P', '9')))", "P=1", `"h:1"`},
		{"import os\nprobe('{host}:{0}'.format(7, host='h'))", "", `"h:7"`},
		{"import os\nP = 1\nif os.environ.get('X'):\n    P = 2\nelif os.environ.get('Y'):\n    P = 3\nprobe(P)", "Y=1", "3"},
		{"import os\ntry:\n    P = int(os.environ['P'])\nexcept (KeyError, ValueError):\n    P = 4\nprobe(P)", "P=x", "4"},
		{"import os\ntry:\n    P = int(os.environ['P'])\nexcept KeyError:\n    P = 4\nelse:\n    print(P)\nprobe(P)", "P=6", "6"},
		{"import os\nif (p := os.environ.get('P')) is None:\n    p = 'none'\nprobe(p)", "", `"none"`},
		{"import os\nc = {'dev': 1, 'prod': 2}\nprobe(c.get(os.environ.get('E'), 9))", "E=prod", "2"},
		{"c = {'port': 1}\nprobe(c.get('host', 'h'))", "", `"h"`},
		{"import os\nprobe(5 if os.environ.get('A') == 'x' else 6)", "A=x", "5"},
		{"import os\nmatch os.environ.get('E'):\n    case 'a' | 'b':\n        P = 1\n    case _:\n        P = 2\nprobe(P)", "E=b", "1"},
		{"import os\nmatch os.environ.get('E'):\n    case 'a' | 'b':\n        P = 1\n    case _:\n        P = 2\nprobe(P)", "E=c", "2"},
		{"import os\ndef port(default=3):\n    return int(os.environ.get('P', default))\nprobe(port())", "", "3"},
		{"import os\ndef port(default):\n    v = os.environ.get('P')\n    if not v:\n        return default\n    return int(v)\nprobe(port(default=4))", "", "4"},
		{"port = lambda d: d + 1\nprobe(port(2))", "", "3"},
		{"class C:\n    P = 1\nclass D(C):\n    pass\nprobe(D.P)", "", "1"},
		{"import os\nclass C:\n    def __init__(self, p=None):\n        self.p = p or 7\nprobe(C(os.environ.get('P')).p)", "", "7"},
		{"class C:\n    def __init__(self, p):\n        self.p = p\nprobe(C(p=8).p)", "", "8"},
		{"class C:\n    @property\n    def p(self):\n        return 9\nprobe(C().p)", "", "9"},
		{"import os\nfrom dataclasses import dataclass\n@dataclass\nclass S:\n    host: str\n    port: int = 5\n    @classmethod\n    def load(cls):\n        return cls(host='h', port=int(os.environ.get('P', '6')))\nprobe(S.load().port)", "", "6"},
		{"from dataclasses import dataclass\n@dataclass\nclass S:\n    host: str\n    port: int = 5\nprobe(S('h').port)", "", "5"},
		{"class A:\n    D = 4\n    @classmethod\n    def parse(cls, text):\n        h, p = text.split(':')\n        return cls(h, int(p) + cls.D)\n    def __init__(self, h, p):\n        self.p = p\nclass B(A):\n    D = 5\nprobe(B.parse('h:1').p)", "", "6"},
		{"class A:\n    @staticmethod\n    def parse(text):\n        return text\nprobe(A().parse('h'))", "", `"h"`},
		{"from typing import NamedTuple\nclass A(NamedTuple):\n    h: str\n    @classmethod\n    def parse(cls, text):\n        return cls(text)\nprobe(A.parse('h').h)", "", `"h"`},
		{"from pydantic_settings import BaseSettings\nclass S(BaseSettings):\n    port: int = 5\nprobe(S().port)", "port=6", "6"},
		{"from pydantic_settings import BaseSettings\nfrom pydantic import Field\nclass S(BaseSettings):\n    listen: int = Field(5, alias='WEB_PORT')\nprobe(S().listen)", "WEB_PORT=6", "6"},
		{"from pydantic_settings import BaseSettings\nclass S(BaseSettings):\n    key: str\nprobe(S().key)", "", "raises"},
		{"from decouple import config\nprobe(config('P', default=5, cast=int))", "P=6", "6"},
		{"from decouple import config\nprobe(config('P'))", "", "raises"},
		{"import environ\nenv = environ.Env()\nprobe(env.bool('D', default=False))", "D=yes", "true"},
		{"import environ\nenv = environ.Env()\nprobe(env.list('H', default=[]))", "H=a,b", `["a" "b"]`},
		{"import os\nos.environ.setdefault('P', '5')\nprobe(os.environ['P'])", "", `"5"`},
		{"import os\nos.environ['P'] = '5'\nprobe(os.environ.get('P'))", "P=6", `"5"`},
		{"H = ['a']\nH.append('b')\nH.extend(['c', 'd'])\nprobe(H)", "", `["a" "b" "c" "d"]`},
		{"import os\nH = ['a']\nif os.environ.get('X'):\n    H.append('b')\nprobe(H)", "X=1", `["a" "b"]`},
		{"import os\nH = ['a']\nif os.environ.get('X'):\n    H.append('b')\nprobe(H)", "", `["a"]`},
		{"import os\ns = dict(host='h', port=1)\ns.update(port=int(os.environ.get('P', s['port'])))\nprobe(s['port'])", "P=2", "2"},
		{"s = {'port': 1}\ns['port'] = 2\nprobe(s['port'])", "", "2"},
		{"import os\nprobe(1 if 'P' in os.environ else 2)", "P=", "1"},
		{"import os\nprobe(1 if 'P' not in os.environ else 2)", "", "1"},
		{"import os\nprobe(max(int(os.environ.get('P', 0)), 3))", "P=2", "3"},
		{"import os\nfrom dataclasses import dataclass, field\n@dataclass\nclass C:\n    p: int = field(default_factory=lambda: int(os.environ.get('P', 4)))\nprobe(C().p)", "P=5", "5"},
		{"from enum import Enum\nclass E(Enum):\n    P = 6\nprobe(E.P.value)", "", "6"},
		{"import click\n@click.command()\n@click.option('--port', default=7, envvar='P')\ndef main(port):\n    probe(port)\nmain()", "", "7"},
		{"import click\n@click.command()\n@click.option('--port', default=7, envvar='P')\ndef main(port):\n    probe(port)\nmain()", "P=8", "8"},
		{"import sys\nprobe(int(sys.argv[1]) if len(sys.argv) > 1 else 9)", "", "9"},
		{"import os\nfrom flask import Flask\nwith open(os.devnull) as f:\n    probe(f)", "", ""},
		{"import argparse\np = argparse.ArgumentParser()\np.add_argument('-p', '--port', type=int, default='5')\nprobe(p.parse_args().port)", "", "5"},
		{"from os import environ as env\nA, B = env.get('A', '1'), int(env['B'])\nprobe(B)", "B=2", "2"},
		{"probe(__name__ == '__main__')", "", "true"},
		{"import os\nprobe(os.environ.get('A', '').lower() in ('1', 'true'))", "A=TRUE", "true"},
		{"import os\nhost, _, port = os.environ.get('AT', 'sky:1').partition(':')\nprobe(port)", "", `"1"`},
		{"import os\nhost, _, port = os.environ.get('AT', 'sky:1').partition(':')\nprobe(port)", "AT=sky", `""`},
		{"import os\nprobe('a:b:1'.rpartition(':')[0])", "", `"a:b"`},
		{"import argparse\np = argparse.ArgumentParser()\np.add_argument('--far', action='store_true')\nprobe(p.parse_args().far)", "", "false"},
		{"from collections import ChainMap\nimport os\nprobe(ChainMap(os.environ, {'A': 'x'})['A'])", "A=1", `"1"`},
		{"from collections import ChainMap\nprobe(ChainMap({'A': 1}, {'A': 2})['A'])", "", "1"},
		{"import os\nprobe([h.strip() for h in os.environ['H'].split(',')])", "H=a", "unknown"},
		{"probe(not_here())", "", "unknown"},
		{"import os\nprobe(os.environ[key()])", "", "unknown"},
	})
}

func TestAcrossFiles(t *testing.T) {
	for name, c := range map[string]struct {
		files map[string]string
		main  string
		env   string
		want  string
	}{
		"module.exports":                     {map[string]string{"a.js": "const { port } = require('./config'); probe(port)", "config.js": "module.exports = { port: process.env.PORT || 1 }"}, "a.js", "", "1"},
		"exports.name":                       {map[string]string{"a.js": "probe(require('./config').port)", "config.js": "exports.port = 2"}, "a.js", "", "2"},
		"export default":                     {map[string]string{"a.js": "import c from './config.js'; probe(c.http.port)", "config.js": "export default { http: { port: 3 } }"}, "a.js", "", "3"},
		"a named export under another name":  {map[string]string{"a.js": "import { web as w } from './config'; probe(w)", "config.js": "const port = 4; export { port as web }"}, "a.js", "", "4"},
		"a namespace":                        {map[string]string{"a.js": "import * as c from './config'; probe(c.PORT)", "config.js": "export const PORT = 5"}, "a.js", "", "5"},
		"a re-export":                        {map[string]string{"a.js": "import { PORT } from './index'; probe(PORT)", "index.js": "export * from './deep/config'", "deep/config.js": "export const PORT = 6"}, "a.js", "", "6"},
		"data":                               {map[string]string{"a.js": "const c = require('./c.json'); probe(process.env.PORT || c.web.port)", "c.json": `{"web": {"port": 7}}`}, "a.js", "", "7"},
		"a function's value in another file": {map[string]string{"a.js": "import { env } from './env'; probe(env('PORT', 8))", "env.js": "export function env(name, def) { const v = process.env[name]; return v === undefined ? def : v }"}, "a.js", "", "8"},
		"a class in another file":            {map[string]string{"a.js": "const Config = require('./config'); probe(new Config('x').port)", "config.js": "class Config { constructor(n) { this.name = n; this.port = 9 } }\nmodule.exports = Config"}, "a.js", "", "9"},
		"a circle":                           {map[string]string{"a.js": "const b = require('./b'); exports.n = 1; probe(b.m)", "b.js": "const a = require('./a'); exports.m = a.n + 1"}, "a.js", "", "2"},
		"a circle that never ends":           {map[string]string{"a.js": "import { x } from './b'; export { x }; probe(x)", "b.js": "export { x } from './a'"}, "a.js", "", "unknown"},
		"module.exports in a circle":         {map[string]string{"a.js": "const b = require('./b'); module.exports = b.make; probe(b.port)", "b.js": "const a = require('./a'); module.exports = Object.assign({ port: a.port || 4 }, a)"}, "a.js", "", "unknown"},
		"from import":                        {map[string]string{"a.py": "from conf import PORT\nprobe(PORT)", "conf.py": "import os\nPORT = int(os.environ.get('PORT', 10))"}, "a.py", "PORT=11", "11"},
		"data that the program opens":        {map[string]string{"a.js": "const fs = require('fs'); const c = JSON.parse(fs.readFileSync('c.json', 'utf8')); probe(c.port)", "c.json": `{"port": 9}`}, "a.js", "", "9"},
		"data that Python opens":             {map[string]string{"a.py": "import json\nwith open('c.json') as f:\n    c = json.load(f)\nprobe(c['port'])", "c.json": `{"port": 9}`}, "a.py", "", "9"},
		"what is spread later counts":        {map[string]string{"a.js": "const c = { port: 1, ...process.env }; probe(c.port)"}, "a.js", "port=2", `"2"`},
		"what is spread later is not known":  {map[string]string{"a.js": "const c = { port: 1, ...require('elsewhere') }; probe(c.port)"}, "a.js", "", "unknown"},
		"what is spread before is not asked": {map[string]string{"a.js": "const c = { ...require('elsewhere'), port: 1 }; probe(c.port)"}, "a.js", "", "1"},
		"dict from a dictionary and words":   {map[string]string{"a.py": "base = {'a': 1}\nc = dict(base, port=2)\nprobe(c['port'])"}, "a.py", "", "2"},
		"Flask reads settings by a prefix":   {map[string]string{"a.py": "from flask import Flask\napp = Flask(__name__)\napp.config.from_mapping(PORT=1)\napp.config.from_prefixed_env('DOME')\nprobe(app.config['PORT'])"}, "a.py", "DOME_PORT=2", `"2"`},
		"import as":                          {map[string]string{"a.py": "import conf as c\nprobe(c.PORT)", "conf.py": "PORT = 12"}, "a.py", "", "12"},
		"a star":                             {map[string]string{"a.py": "from base import *\nHOST = 'x'\nprobe(PORT)", "base.py": "PORT = 13\nHOST = 'y'"}, "a.py", "", "13"},
		"a package":                          {map[string]string{"a.py": "from conf import settings\nprobe(settings.PORT)", "conf/__init__.py": "", "conf/settings.py": "PORT = 14"}, "a.py", "", "14"},
		"an object made in another module":   {map[string]string{"a.py": "from conf import settings\nprobe(settings.port)", "conf.py": "import os\nclass S:\n    def __init__(self):\n        self.port = int(os.getenv('P', '15'))\nsettings = S()"}, "a.py", "", "15"},
	} {
		t.Run(name, func(t *testing.T) {
			if got := outcome(argument(t, c.files, c.main).Under(env(c.env))); got != c.want {
				t.Errorf("comes to %s, not %s", got, c.want)
			}
		})
	}
}

func TestVariablesAndTrail(t *testing.T) {
	v := argument(t, map[string]string{
		"a.js":      "const config = require('./config');\nprobe(config.port);\n",
		"config.js": "const fallback = 3000;\nmodule.exports = {\n  port: process.env.WEB_PORT || process.env.PORT || fallback,\n};\n",
	}, "a.js")
	var names []string
	for _, x := range v.Variables() {
		names = append(names, x.Text)
	}
	if got := strings.Join(names, " "); got != "WEB_PORT PORT" {
		t.Errorf("the variables are %s", got)
	}
	var steps []string
	for _, s := range v.Trail() {
		steps = append(steps, fmt.Sprintf("%s:%d", s.At.File, s.At.Line))
	}
	if got := strings.Join(steps, " "); got != "a.js:1 config.js:2 config.js:3 config.js:1" {
		t.Errorf("the trail is %s", got)
	}
	if !v.Depends() {
		t.Error("a value with variables does not depend on the environment")
	}
}

func TestOpenEnvironmentIsNotGuessed(t *testing.T) {
	v := argument(t, map[string]string{"a.js": "probe(process.env.PORT || 3000)"}, "a.js")
	o := v.Under(value.Environ{Open: true})
	if o.Known() || !strings.Contains(o.Text, "PORT") {
		t.Errorf("under an open environment it comes to %s (%s)", outcome(o), o.Text)
	}
	if o := v.Under(value.Environ{Open: true}.With(map[string]string{"PORT": "1"})); outcome(o) != `"1"` {
		t.Errorf("a variable that is set is not seen: %s", outcome(o))
	}
}

func TestMadeIsWhatTheValueComesTo(t *testing.T) {
	v := argument(t, map[string]string{"a.js": "let p = process.env.PORT || 3000;\nif (process.env.NODE_ENV === 'production') {\n  p = 80;\n}\nprobe(p)"}, "a.js")
	for environment, want := range map[string]int{"": 1, "NODE_ENV=production": 3} {
		if made := v.Made(env(environment)); made.Kind != value.Num || made.At.Line != want {
			t.Errorf("under %q the number is made in line %d, not %d", environment, made.At.Line, want)
		}
	}
}

func TestArgumentsOfTheCommand(t *testing.T) {
	l := load(map[string]string{"a.js": "probe(process.argv[2] || 5)", "b.py": "import argparse\np = argparse.ArgumentParser()\np.add_argument('--port', type=int, default=5)\nprobe(p.parse_args().port)"})
	for name, want := range map[string]string{"a.js": `"6"`, "b.py": "6"} {
		f := l.File(name)
		e := value.New(l, name)
		e.Args = []*value.Value{value.Text("6", place.Span{})}
		if name == "b.py" {
			e.Args = []*value.Value{value.Text("--port=6", place.Span{})}
		}
		for _, site := range f.Calls {
			if site.Node.Kid(0).Dotted() == "probe" {
				if got := outcome(e.Expr(site.Node.Kid(1), site.Scope).Under(env(""))); got != want {
					t.Errorf("%s: the argument comes to %s, not %s", name, got, want)
				}
			}
		}
	}
}

// endings are those of the languages whose values are followed.
var endings = []string{".js", ".py", ".ts", ".rb", ".php", ".java", ".kt", ".go", ".cs", ".rs", ".exs"}

func FuzzEvaluate(f *testing.F) {
	for i, s := range []string{
		"class A { x = new A().x } probe(new A().x, process.env.PORT || 3000)",
		"import os\ndef f(x):\n    return g(x)\ndef g(x):\n    return f(x)\nprobe(f(1))",
		"enum A { X = 'x' } probe(A.X!)",
		"class A\n  def self.b = ENV['C']&.to_i\nend\nprobe(A.b)",
		"<?php class A { function __construct(public int $p = 1) {} } probe((new A())->p, \"a$b[c]{$d->e}\");",
		"class A { enum E { X(1); int v; E(int v) { this.v = v; } } void m() { probe(E.X.v); } }",
		"fun a(p: Int = 1) = p\nval b = a() ?: 2\nfun main() { probe(b) }",
		"package a\nfunc f() (int, error) { return 1, nil }\nfunc main() { x, err := f(); if err != nil { return }; probe(x) }",
		"var p = int.TryParse(x, out var n) ? n : 1; probe($\"a{p}\", y is { } z);",
		"fn f() -> u16 { match env::var(\"P\") { Ok(p) => p.parse().unwrap(), Err(_) => 1 } } fn main() { probe(f()); }",
		"defmodule A do\n  def b, do: System.get_env(\"C\") |> String.to_integer()\nend\nprobe(A.b())",
	} {
		f.Add(s, uint8(i))
	}
	f.Fuzz(func(t *testing.T, text string, language uint8) {
		name := "a" + endings[int(language)%len(endings)]
		l := load(map[string]string{name: text})
		file := l.File(name)
		if file == nil {
			return
		}
		e := value.New(l, name)
		for i, site := range file.Calls {
			if i > 50 {
				break
			}
			args, keys := e.Arguments(site)
			for _, v := range args {
				v.Under(value.Environ{})
				v.Made(value.Environ{})
				v.Trail()
			}
			for _, v := range keys {
				v.Variables()
			}
		}
	})
}

func TestSeenTellsEnvironmentsApart(t *testing.T) {
	t.Parallel()
	a := value.Environ{Set: map[string]string{"PORT": "1", "SKY": "clear"}}
	a.Seen = &value.Seen{}
	a.Lookup("PORT", false)
	a.Lookup("DOME", false)
	for _, c := range []struct {
		name string
		b    value.Environ
		want bool
	}{
		{"what was not asked differs", value.Environ{Set: map[string]string{"PORT": "1", "SKY": "cloudy"}}, true},
		{"what was asked differs", value.Environ{Set: map[string]string{"PORT": "2"}}, false},
		{"what was not there is set", value.Environ{Set: map[string]string{"PORT": "1", "DOME": ""}}, false},
		{"what was asked is vague", value.Environ{Set: map[string]string{"PORT": "1"}, Vague: map[string]bool{"PORT": true}}, false},
		{"another process", value.Environ{Set: map[string]string{"PORT": "1"}, Worker: true}, false},
	} {
		if got := a.Seen.Same(a, c.b); got != c.want {
			t.Errorf("%s: same is %v", c.name, got)
		}
	}
	a.With(map[string]string{"GATE": "1"}).Lookup("gate", true) // by any letter case: all of it
	if b := (value.Environ{Set: map[string]string{"PORT": "1", "SKY": "cloudy"}}); a.Seen.Same(a, b) {
		t.Error("all of the environment was looked at, and another one is the same")
	}
}
