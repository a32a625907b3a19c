package code_test

import (
	"testing"

	"ubique/core/code"
	"ubique/core/place"
)

func TestMattersFindsWhatItLooksFor(t *testing.T) {
	for text, want := range map[string]bool{
		"app.listen(1)": true, "LISTEN": true, "lis ten": false, "": false, "lislisten": true, "passpassword": true, "process.Env.X": true, "star.name": false, "sesession": true,
		"const magnitude = star.brightness * 2": false, "a.set('port', 1)": true, "report": false, "jw": false, "tokens": true, "to ken": false, "serserve": true, "SeSsIoN": true, "globals(": false,
	} {
		if got := code.Matters([]byte(text)); got != want {
			t.Errorf("%q matters: %v", text, got)
		}
	}
}

// TestSkimSeesTheImportsThatReadSees compares the quick way with the whole.
func TestSkimSeesTheImportsThatReadSees(t *testing.T) {
	skim := func(name, text string) *code.File {
		return code.Skim(code.LanguageOf(name), name, []byte(text), place.NewLines([]byte(text)))
	}
	for _, c := range []struct{ name, text string }{
		{"a.ts", "import a, { b as c } from 'a';\nimport type { T } from './t';\nimport 'side';\nexport * from './all';\nexport { d } from './d';\nexport type { E } from './e';\nexport const x = () => a(b);\n"},
		{"a.ts", "const e = require('e');\nconst { f } = require('./f'), g = 1;\nmodule.exports = require('./h');\n"},
		{"a.ts", "import fs = require('fs');\nexport default class { m() { return import.meta.url } }\n"},
		{"a.ts", "const s = 'import x from \"y\"'; // import z from 'z'\nlet t = `require('q')`;\nobj.import('n');\n"},
		{"a.py", "import os, os.path as p\nfrom a.b import (c,\n  d as e)\nfrom . import f\n\ndef g():\n    return 'import h'\n"},
		{"a.py", "'''\nimport x\n'''\nfrom y import *; import z\nclass A:\n    pass\n"},
	} {
		f, whole := skim(c.name, c.text), read(c.name, c.text)
		if f == nil {
			t.Errorf("it cannot be skimmed:\n%s", c.text)
			continue
		}
		check(t, c.text, imports(f), imports(whole))
		for i := range min(len(f.Imports), len(whole.Imports)) {
			if a, b := f.At(f.Imports[i].Node), whole.At(whole.Imports[i].Node); a != b {
				t.Errorf("an import stands at %s for one and at %s for the other", a, b)
			}
		}
	}
	for _, c := range []struct{ name, text string }{
		{"a.js", "try { require('a') } catch {}"}, {"a.js", "const a = b || require('c');"}, {"a.js", "if (x) require('y');"},
		{"a.js", "function f() { return require('g') }"}, {"a.js", "const a = () => import('b');"}, {"a.js", "load(require)"},
		{"a.py", "try:\n    import a\nexcept ImportError:\n    a = None\n"}, {"a.py", "def f():\n    from b import c\n"}, {"a.py", "if x: import y\n"}, {"a.py", "m = __import__('n')\n"},
	} {
		if f := skim(c.name, c.text); f != nil {
			t.Errorf("an import under a condition is skimmed:\n%s", c.text)
		}
	}
}
