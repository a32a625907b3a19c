package document_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"ubique/core/document"
	"ubique/core/place"
)

func lines(s string) *place.Lines { return place.NewLines([]byte(s)) }

func read(t *testing.T, format, text string) *document.Node {
	t.Helper()
	var n *document.Node
	var err error
	switch format {
	case "json":
		n, err = document.JSON("f", []byte(text), lines(text), false)
	case "jsonc":
		n, err = document.JSON("f", []byte(text), lines(text), true)
	case "toml":
		n, err = document.TOML("f", []byte(text), lines(text))
	case "ini":
		n = document.INI("f", []byte(text), lines(text))
	case "env":
		n = document.Dotenv("f", []byte(text), lines(text))
	case "yaml":
		var docs []*document.Node
		docs, err = document.YAML("f", []byte(text), lines(text))
		if len(docs) > 0 {
			n = docs[0]
		}
	}
	if err != nil {
		t.Fatalf("%s\n%s: %v", text, format, err)
	}
	return n
}

// flat writes a document as path=value@line:column.
func flat(n *document.Node) string {
	var list []string
	n.Walk(func(path []string, n *document.Node) {
		if text, ok := n.Scalar(); ok {
			list = append(list, fmt.Sprintf("%s=%s@%d:%d", strings.Join(path, "."), text, n.At().Line, n.At().Col))
		}
	})
	return strings.Join(list, " ")
}

func TestFormats(t *testing.T) {
	for _, c := range []struct{ format, text, want string }{
		{"json", "{\n  \"a\": {\"b\": [1, \"x\", true, null]}\n}", "a.b.0=1@2:15 a.b.1=x@2:18 a.b.2=true@2:23"},
		{"json", "\ufeff{\"a\": \"\\u00e9\\n\"}", "a=é\n@1:8"},
		{"json", "{\"é\": 1, \"b\": 2}", "é=1@1:7 b=2@1:15"},
		{"jsonc", "{ // one\n  \"a\": 1, /* two */\n}", "a=1@2:8"},
		{"yaml", "a:\n  b: 1\n  c: \"x\"\n  d:\n  - yes\n  - two words\n", "a.b=1@2:6 a.c=x@3:6 a.d.0=yes@5:5 a.d.1=two words@6:5"},
		{"yaml", "base: &b\n  p: 1\nweb:\n  <<: *b\n  q: 2\n", "base.p=1@2:6 web.p=1@2:6 web.q=2@5:6"},
		{"yaml", "{a: [1, 2], b: 'it''s'}", "a.0=1@1:6 a.1=2@1:9 b=it's@1:16"},
		{"toml", "[project]\nname = \"x\"\n[project.urls]\nhome = 'h'\n[[package]]\nname = \"a\"\n[[package]]\nname = \"b\"\n", "project.name=x@2:8 project.urls.home=h@4:8 package.0.name=a@6:8 package.1.name=b@8:8"},
		{"toml", "a.b.c = 1\nd = { e = true, f = [1, 2] }\n", "a.b.c=1@1:9 d.e=true@2:11 d.f.0=1@2:22 d.f.1=2@2:25"},
		{"ini", "top = 1\n[a]\n# comment\nb = c d\nlist =\n  x\n  y\n[e]\nf: g\n", "top=1@1:7 a.b=c d@4:5 a.list=x\ny@5:7 e.f=g@9:4"},
		{"env", "A=1\nexport B=\"two words\" # c\nC='#not'\n# D=4\nE=a # b\nF=\nG=\"x\\ny\"\nnot a line\nH = 5\n", "A=1@1:3 B=two words@2:10 C=#not@3:3 E=a@5:3 F=@6:3 G=x\ny@7:3 H=5@9:5"},
		{"env", "K=\"a\nb\"\nL=1\n", "K=a\nb@1:3 L=1@3:3"},
	} {
		if got := flat(read(t, c.format, c.text)); got != c.want {
			t.Errorf("%s\n%s\nis     %s\nwanted %s", c.format, c.text, got, c.want)
		}
	}
}

func TestBadInputNamesThePlaceAndWhatWasExpected(t *testing.T) {
	for _, c := range []struct{ format, text, at string }{
		{"json", "{\n  \"a\": 1,\n}", "2:9"},
		{"json", "{\n  \"a\" 1\n}", "2:7"},
		{"json", "{\"a\": 1} x", "1:10"},
		{"json", "", "1:1"},
		{"json", "{ \"a\": 1 // no\n}", "1:10"},
		{"json", strings.Repeat("[", 600), "1:501"},
		{"toml", "a = 1\na = 2\n", "2:1"},
		{"toml", "[x\n", "1:3"},
		{"toml", "a = [1,\nb = 2", "2:1"},
		{"yaml", "a: 1\n  b: 2\n", "2:3"},
		{"yaml", "a:\n\tb: 1\n", "2:2"},
		{"yaml", "a: [1\nb: 2\n", ""},
	} {
		var err error
		switch c.format {
		case "json":
			_, err = document.JSON("f", []byte(c.text), lines(c.text), false)
		case "toml":
			_, err = document.TOML("f", []byte(c.text), lines(c.text))
		case "yaml":
			_, err = document.YAML("f", []byte(c.text), lines(c.text))
		}
		e, ok := document.AsError(err)
		if !ok {
			t.Errorf("%s %q gives %v, not an error with its place", c.format, c.text[:min(20, len(c.text))], err)
			continue
		}
		if got := fmt.Sprintf("%d:%d", e.At.Line, e.At.Col); c.at != "" && got != c.at {
			t.Errorf("%s %q: the error is at %s, not %s: %s", c.format, c.text[:min(20, len(c.text))], got, c.at, e.Expected)
		}
		if e.Expected == "" || !strings.HasPrefix(e.Error(), "f:") {
			t.Errorf("the error does not say what was expected: %v", e)
		}
	}
}

func TestAliasesDoNotGrowWithoutEnd(t *testing.T) {
	var b strings.Builder
	b.WriteString("a0: &a0 [x, x, x, x, x, x, x, x]\n")
	for i := 1; i < 9; i++ {
		fmt.Fprintf(&b, "a%d: &a%d [", i, i)
		for range 8 {
			fmt.Fprintf(&b, "*a%d, ", i-1)
		}
		b.WriteString("]\n")
	}
	text := b.String()
	if _, err := document.YAML("f", []byte(text), lines(text)); err == nil {
		t.Error("a document of 8^9 nodes was read")
	}
	text = "a: &a [*a]"
	if _, err := document.YAML("f", []byte(text), lines(text)); err == nil {
		t.Error("an alias that holds itself was followed")
	}
	text = "a: 1\n---\nb: 2\n---\n"
	if docs, err := document.YAML("f", []byte(text), lines(text)); err != nil || len(docs) != 3 || docs[1].Get("b") == nil {
		t.Errorf("several documents are %v, %v", docs, err)
	}
}

func TestAccess(t *testing.T) {
	n := read(t, "json", `{"a": {"b": 5, "c": "6", "d": "x", "e": 1.5, "f": 2e1, "a": 1, "a": 2}, "l": [1]}`)
	for key, want := range map[string]int{"b": 5, "c": 6, "f": 20} {
		if got, ok := n.Get("a", key).Int(); !ok || got != want {
			t.Errorf("a.%s is %d, %v", key, got, ok)
		}
	}
	for _, key := range []string{"d", "e", "none"} {
		if got, ok := n.Get("a", key).Int(); ok {
			t.Errorf("a.%s is taken for %d", key, got)
		}
	}
	if n.Get("a", "a").Text != "2" {
		t.Error("of two equal keys the last counts")
	}
	if n.Get("l", "0") != nil || n.Get("a", "b", "c") != nil || n.Get("x").Items() != nil || n.Get("x").Str() != "" {
		t.Error("what is not there is found")
	}
	if at := n.Get("a", "c").KeyAt(); at.Col != 16 || at.EndCol != 19 {
		t.Errorf("the key stands at %d to %d", at.Col, at.EndCol)
	}
}

func TestPlainLines(t *testing.T) {
	text := "\ufeff# comment\n\n  flask==1 # why\nurl#frag\n\tx\r\n"
	var got []string
	for _, l := range document.PlainLines("f", []byte(text), lines(text)) {
		got = append(got, fmt.Sprintf("%s@%d:%d", l.Text, l.At.Line, l.At.Col))
	}
	if s := strings.Join(got, " "); s != "flask==1@3:3 url#frag@4:1 x@5:2" {
		t.Errorf("the lines are %s", s)
	}
}

func TestValidate(t *testing.T) {
	schema := read(t, "json", `{"type": "object", "required": ["name"], "additionalProperties": false,
		"properties": {"name": {"type": "string", "pattern": "^[a-z]+$"}, "n": {"type": "integer", "minimum": 1}, "kind": {"enum": ["a", "b"]},
		"list": {"type": "array", "items": {"$ref": "#/$defs/item"}}, "either": {"anyOf": [{"type": "string"}, {"type": "null"}]}, "v": {"const": "x"}},
		"$defs": {"item": {"type": ["string", "boolean"]}}}`)
	for text, want := range map[string]string{
		"name: ok\nn: 1\nkind: a\nlist: [x, true]\neither: null\nv: x\n": "",
		"n: 1\n":                "name",
		"name: Ok\n":            "form",
		"name: ok\nn: 0\n":      "at least 1",
		"name: ok\nn: 1.5\n":    "integer",
		"name: ok\nkind: c\n":   "one of a, b",
		"name: ok\nlist: [1]\n": "list.0",
		"name: ok\neither: 1\n": "none of the forms",
		"name: ok\nother: 1\n":  "other is not known",
		"name: ok\nv: y\n":      "v must be x",
		"[1]":                   "must be object",
	} {
		errs := document.Validate(schema, read(t, "yaml", text))
		switch {
		case want == "" && len(errs) > 0:
			t.Errorf("%q is not valid: %v", text, errs)
		case want != "" && (len(errs) == 0 || !strings.Contains(errs[0].Error(), want)):
			t.Errorf("%q gives %v, which does not say %q", text, errs, want)
		}
	}
}

func FuzzDocuments(f *testing.F) {
	for _, s := range []string{`{"a": [1, {"b": null}]}`, "a: &x {b: *x}\n---\nc: |\n  d\n", "[a.b]\nc = [1, {d = 2}]\n", "A=\"b\nc\"\n", "a { b = 1 // c\n b = ${?D}\n e.f : \"g\" }\n", "server { listen 80; # x\n location / { a 'b'; } }\n"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		l := place.NewLines(data)
		var all []*document.Node
		if n, err := document.JSON("f", data, l, true); err == nil {
			all = append(all, n)
		}
		if n, err := document.TOML("f", data, l); err == nil {
			all = append(all, n)
		}
		if docs, err := document.YAML("f", data, l); err == nil {
			all = append(all, docs...)
		}
		all = append(all, document.INI("f", data, l), document.Dotenv("f", data, l), document.HOCON("f", data, l))
		for _, d := range append(document.Directives("f", data, l), document.Lined("f", data, l)...) {
			if d.At.Line > l.Count() || d.At.Line < 1 {
				t.Fatalf("a directive stands in line %d of %d", d.At.Line, l.Count())
			}
		}
		for _, n := range all {
			n.Walk(func(_ []string, n *document.Node) {
				if at := n.At(); at.Line > l.Count() || at.Line < 0 {
					t.Fatalf("a value stands in line %d of %d", at.Line, l.Count())
				}
			})
		}
	})
}

func TestXML(t *testing.T) {
	text := "<?xml version=\"1.0\"?>\n<project xmlns=\"http://x\">\n  <!-- a -->\n  <version> 1.0 </version>\n  <dependencies>\n    <dependency scope=\"test\"><artifactId>stars</artifactId></dependency>\n    <dependency/>\n  </dependencies>\n</project>\n"
	d, err := document.XML("pom.xml", []byte(text), place.NewLines([]byte(text)))
	if err != nil {
		t.Fatal(err)
	}
	v := d.Get("project", "version")
	if v.Str() != "1.0" || v.At().String() != "pom.xml:4:13" || v.KeyAt().Col != 4 {
		t.Errorf("the version is %q at %s, its name at %s", v.Str(), v.At(), v.KeyAt())
	}
	deps := d.Get("project", "dependencies").All("dependency")
	if len(deps) != 2 || deps[0].Get("artifactId").Str() != "stars" || deps[0].Get("@scope").Str() != "test" || deps[0].Get("@scope").At().Col != 24 {
		t.Errorf("the dependencies are %v", deps)
	}
	for _, bad := range []string{"<a>\n<b></a>", "", "<a", "<a>&x;</a>", strings.Repeat("<a>", 600)} {
		if _, err := document.XML("x.xml", []byte(bad), place.NewLines([]byte(bad))); err == nil {
			t.Errorf("%.20q is taken for XML", bad)
		} else if e, ok := document.AsError(err); !ok || e.At.Line < 1 {
			t.Errorf("%.20q: %v has no place", bad, err)
		}
	}
}

func TestHOCON(t *testing.T) {
	text := "# settings\nktor {\n  deployment { port = 8080, port = ${?PORT} }\n  deployment.host = \"0.0.0.0\" // any\n  modules = [ a.b\n c ]\n}\ninclude \"other\"\n\"play\".http.port: 9000\nbroken {"
	var got []string
	for _, n := range document.HOCON("application.conf", []byte(text), place.NewLines([]byte(text))).Kids {
		got = append(got, n.Key+"="+n.Str()+"@"+n.At().String())
	}
	want := []string{"ktor.deployment.port=8080@application.conf:3:23", "ktor.deployment.port=${?PORT}@application.conf:3:36", "ktor.deployment.host=0.0.0.0@application.conf:4:21"}
	if len(got) < 3 || !slices.Equal(got[:3], want) {
		t.Errorf("read %v\nwanted %v", got, want)
	}
}

func TestDirectives(t *testing.T) {
	text := "# listen 1;\nserver {\n  listen ${PORT} default_server; listen [::]:443 ssl;\n  add_header X \"a; b\";\n  location / {\n    root /srv;\n  }\n}\n"
	var got []string
	for _, d := range document.Directives("nginx.conf", []byte(text), place.NewLines([]byte(text))) {
		got = append(got, d.Name+"("+strings.Join(d.Args, "|")+")@"+d.At.String())
	}
	want := []string{"server()@nginx.conf:2:1", "listen(${PORT}|default_server)@nginx.conf:3:3", "listen([::]:443|ssl)@nginx.conf:3:34", "add_header(X|a; b)@nginx.conf:4:3", "location(/)@nginx.conf:5:3", "root(/srv)@nginx.conf:6:5"}
	if !slices.Equal(got, want) {
		t.Errorf("read %v\nwanted %v", got, want)
	}
	text = "# Listen 1\nListen \"0.0.0.0:8080\"\n<VirtualHost *:80>\n  ServerName a b\n</VirtualHost>\n"
	got = nil
	for _, d := range document.Lined("httpd.conf", []byte(text), place.NewLines([]byte(text))) {
		got = append(got, d.Name+"("+strings.Join(d.Args, "|")+")@"+d.At.String())
	}
	if want := []string{"Listen(0.0.0.0:8080)@httpd.conf:2:1", "ServerName(a|b)@httpd.conf:4:3"}; !slices.Equal(got, want) {
		t.Errorf("read %v\nwanted %v", got, want)
	}
}
