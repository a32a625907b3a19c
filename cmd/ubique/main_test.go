package main_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/rules/catalog"
	"ubique/demo"
)

// program is the built program, as a user has it.
var program string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "ubique-test-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	program = filepath.Join(dir, "ubique")
	build := exec.Command("go", "build", "-trimpath", "-o", program, ".")
	build.Env = append(os.Environ(), "CGO_ENABLED=0")
	if out, err := build.CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "building the program: %v\n%s", err, out)
		os.Exit(1)
	}
	code := m.Run()
	os.RemoveAll(dir)
	os.Exit(code)
}

type result struct {
	out, err string
	status   int
}

// ubique runs the program in a folder with an environment of its own.
func ubique(t *testing.T, dir string, args ...string) result {
	t.Helper()
	cmd := exec.Command(program, args...)
	cmd.Dir = dir
	cmd.Env = []string{"PATH=" + os.Getenv("PATH"), "HOME=" + dir, "LANG=C.UTF-8"}
	var out, errOut bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errOut
	err := cmd.Run()
	var exit *exec.ExitError
	if err != nil && !errors.As(err, &exit) {
		t.Fatal(err)
	}
	return result{out.String(), errOut.String(), cmd.ProcessState.ExitCode()}
}

func write(t *testing.T, dir string, files map[string]string) string {
	t.Helper()
	for name, text := range files {
		p := filepath.Join(dir, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(p), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(p, []byte(text), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	return dir
}

var (
	sound = map[string]string{
		"package.json": "{\n  \"name\": \"catalogue\",\n  \"engines\": { \"node\": \"24.x\" },\n  \"scripts\": { \"start\": \"node server.js\" },\n  \"dependencies\": { \"express\": \"5.1.0\" }\n}\n",
		"server.js":    "const app = require(\"express\")();\napp.listen(process.env.PORT || 3000);\n",
	}
	troubled = map[string]string{
		"package.json": sound["package.json"],
		"server.js":    "const app = require(\"express\")();\napp.listen(process.env.port || 3000);\n",
	}
)

// report runs a command with --format json and reads what comes back.
func report(t *testing.T, dir string, args ...string) (map[string]any, result) {
	t.Helper()
	r := ubique(t, dir, append(args, "--format", "json")...)
	var m map[string]any
	if err := json.Unmarshal([]byte(r.out), &m); err != nil {
		t.Fatalf("%v is no JSON: %v\n%s%s", args, err, r.out, r.err)
	}
	return m, r
}

func TestExitStatus(t *testing.T) {
	good, bad := write(t, t.TempDir(), sound), write(t, t.TempDir(), troubled)
	advice := write(t, t.TempDir(), map[string]string{"package.json": sound["package.json"], "server.js": "require(\"express\")().listen(process.env.PORT);\n"})
	file := filepath.Join(good, "server.js")
	for _, c := range []struct {
		args   []string
		status int
		says   string
	}{
		{[]string{"check", good}, 0, ""},
		{[]string{"check", bad}, 1, ""},
		{[]string{"check", bad, "--fail-at", "never"}, 0, ""},
		{[]string{"check", bad, "--on", "image"}, 0, ""},
		{[]string{"check", advice}, 0, ""},
		{[]string{"check", advice, "--fail-at", "advice"}, 1, ""},
		{[]string{"matrix", bad}, 1, ""},
		{[]string{"survey", bad}, 0, ""},
		{[]string{"check", bad, "--on", "moon"}, 2, "no host named moon"},
		{[]string{"check", bad, "--fail-at", "panic"}, 2, "--fail-at panic"},
		{[]string{"check", bad, "--format", "xml"}, 2, "--format xml"},
		{[]string{"check", bad, "--colour"}, 2, "unknown flag"},
		{[]string{"check", bad, "--color", "sometimes"}, 2, "--color sometimes"},
		{[]string{"check", bad, bad}, 2, "at most 1"},
		{[]string{"survey", bad, "--with", "PORT"}, 2, "NAME=VALUE"},
		{[]string{"chekc"}, 2, "unknown command"},
		{[]string{"rules", "port/nothing"}, 2, "no rule or family named"},
		{[]string{"hosts", "moon"}, 2, "no host named moon"},
		{[]string{"check", filepath.Join(good, "none")}, 3, "none"},
		{[]string{"check", file}, 3, "is a file"},
		{[]string{"check", bad, "--config", filepath.Join(good, "none.yaml")}, 2, "none.yaml"},
		{[]string{"demo", good}, 2, "not empty"},
		{[]string{"version"}, 0, ""},
	} {
		r := ubique(t, good, c.args...)
		if r.status != c.status || !strings.Contains(r.err, c.says) {
			t.Errorf("ubique %s ends with %d, not %d: %s", strings.Join(c.args, " "), r.status, c.status, r.err)
		}
		if c.status >= 2 && (r.out != "" || !strings.HasPrefix(r.err, "ubique: ")) {
			t.Errorf("ubique %s says on its output %q and on its errors %q", strings.Join(c.args, " "), r.out, r.err)
		}
	}
}

func TestEveryCommandHelps(t *testing.T) {
	dir := t.TempDir()
	r := ubique(t, dir, "--help")
	for _, name := range []string{"check", "survey", "matrix", "rules", "hosts", "demo", "version", "completion"} {
		if !strings.Contains(r.out, "\n  "+name) {
			t.Errorf("the help does not list %s", name)
		}
		h := ubique(t, dir, name, "--help")
		if h.status != 0 || name != "completion" && !strings.Contains(h.out, "Examples:\n  ubique") {
			t.Errorf("the help of %s has no example", name)
		}
	}
	for _, shell := range []string{"bash", "zsh", "fish"} {
		if r := ubique(t, dir, "completion", shell); r.status != 0 || !strings.Contains(r.out, "ubique") {
			t.Errorf("no completion for %s", shell)
		}
	}
}

// TestExamplesRun runs the examples of the help texts as they are written.
func TestExamplesRun(t *testing.T) {
	tree := write(t, t.TempDir(), troubled)
	write(t, tree, map[string]string{"services/bookings/package.json": sound["package.json"], "services/bookings/server.js": sound["server.js"]})
	for _, name := range []string{"check", "survey", "matrix", "rules", "hosts", "version"} {
		help := ubique(t, tree, name, "--help").out
		_, examples, _ := strings.Cut(help, "Examples:\n")
		examples, _, _ = strings.Cut(examples, "\n\n")
		ran := 0
		for line := range strings.Lines(examples) {
			line, _, _ = strings.Cut(strings.TrimSpace(line), " #")
			line, _, _ = strings.Cut(line, " >")
			args := strings.Fields(line)
			if len(args) == 0 || args[0] != "ubique" {
				continue
			}
			ran++
			if r := ubique(t, tree, args[1:]...); r.status > 1 || r.err != "" {
				t.Errorf("%s ends with %d: %s", line, r.status, r.err)
			}
		}
		if ran == 0 {
			t.Errorf("the help of %s has no example that runs", name)
		}
	}
}

func TestTextOfAFinding(t *testing.T) {
	dir := write(t, t.TempDir(), troubled)
	r := ubique(t, dir, "check")
	for _, want := range []string{
		"blocker port/name-case", "server.js:2:12", "process.env.port || 3000", "▔▔▔▔", "on       pushed", "instead  process.env.PORT || 3000", "Do this first: port/name-case, at server.js:2:12",
		"the root of the tree", "Node.js 24.x · Express", "1 blocker",
	} {
		if !strings.Contains(r.out, want) {
			t.Errorf("the text does not say %q:\n%s", want, r.out)
		}
	}
	if strings.Contains(r.out, "\x1b") {
		t.Error("there is colour where the output is no terminal")
	}
	colored := ubique(t, dir, "check", "--color", "always").out
	if !strings.Contains(colored, "\x1b[1;31m") {
		t.Error("--color always gives no colour")
	}
	if good := ubique(t, write(t, t.TempDir(), sound), "check").out; !strings.Contains(good, "Nothing was found that would go wrong") {
		t.Errorf("a sound tree says:\n%s", good)
	}
}

func TestDirectoryFlag(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{"svc/package.json": sound["package.json"], "svc/server.js": troubled["server.js"]})
	a := ubique(t, dir, "-C", "svc", "check")
	b := ubique(t, filepath.Join(dir, "svc"), "check")
	if a.out != b.out || a.status != b.status {
		t.Errorf("-C svc and cd svc differ:\n%s\n%s", a.out, b.out)
	}
}

func TestControlCharactersAreMadeVisible(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"package.json":          "{\n  \"name\": \"x\",\n  \"engines\": { \"node\": \"24.x\" },\n  \"scripts\": { \"start\": \"node esc\\u001b[31m.js\" }\n}\n",
		"svc\x1b[2J/server.js":  "require('http').createServer().listen(3000); // \x1b]0;title\x07 \u202e\n",
		"svc\x1b[2J/Procfile":   "web: node server.js\n",
		"svc\x1b[2J/.nvmrc":     "24\n",
		"svc\x1b[2J/new\nline":  "",
		"broken\x1b/Dockerfile": "FROM \x1b[31mnode\nFOO\x1b\n",
	})
	for _, args := range [][]string{{"check"}, {"survey"}, {"matrix"}} {
		r := ubique(t, dir, args...)
		if strings.ContainsAny(r.out+r.err, "\x1b\x07\u202e") {
			t.Errorf("ubique %s lets control characters through:\n%q", args[0], r.out)
		}
		if r.status > 1 {
			t.Errorf("ubique %s ends with %d: %s", args[0], r.status, r.err)
		}
	}
}

func TestSameOutputAtEveryRun(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "observatory")
	if err := demo.Write(dir); err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"check"}, {"survey"}, {"matrix"}, {"check", "--format", "json"}, {"check", "--format", "sarif"}, {"survey", "--with", "PORT=1", "--with", "HOST=x", "--format", "json"}} {
		first := ubique(t, dir, args...)
		for range 5 {
			if again := ubique(t, dir, args...); again.out != first.out {
				t.Errorf("ubique %s differs from run to run", strings.Join(args, " "))
				break
			}
		}
	}
}

func TestReportFollowsItsSchema(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "observatory")
	if err := demo.Write(dir); err != nil {
		t.Fatal(err)
	}
	data, err := os.ReadFile(filepath.Join("..", "..", "docs", "report.schema.json"))
	if err != nil {
		t.Fatal(err)
	}
	schema, err := document.JSON("report.schema.json", data, place.NewLines(data), false)
	if err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"check", dir}, {"survey", dir, "--with", "PORT=5123"}, {"matrix", dir}, {"check", t.TempDir()}} {
		r := ubique(t, dir, append(args, "--format", "json")...)
		doc, err := document.JSON("report", []byte(r.out), place.NewLines([]byte(r.out)), false)
		if err != nil {
			t.Fatalf("%v: %v", args, err)
		}
		for _, e := range document.Validate(schema, doc) {
			t.Errorf("ubique %s: %v", args[0], e)
		}
		// Every field of the report is described.
		undescribed(t, schema, doc, "")
	}
}

func undescribed(t *testing.T, schema, doc *document.Node, path string) {
	t.Helper()
	if doc.Kind == document.List {
		for _, k := range doc.Kids {
			undescribed(t, schema.Get("items"), k, path)
		}
		return
	}
	for _, k := range doc.Items() {
		p := schema.Get("properties", k.Key)
		if p == nil && schema.Get("additionalProperties") == nil {
			t.Errorf("the schema does not describe %s.%s", path, k.Key)
			continue
		}
		undescribed(t, p, k, path+"."+k.Key)
	}
}

func TestSarif(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"package.json":   sound["package.json"],
		"server.js":      "const app = require(\"express\")();\nconst { port } = require(\"./a dir/größe\");\napp.listen(port);\n",
		"a dir/größe.js": "exports.port = process.env.port || 3000;\n",
	})
	r := ubique(t, dir, "check", "--format", "sarif")
	var log struct {
		Version string
		Runs    []struct {
			Tool struct {
				Driver struct {
					Name  string
					Rules []struct {
						ID   string
						Help struct{ Markdown string }
					}
				}
			}
			ColumnKind string
			Results    []struct {
				RuleID              string
				RuleIndex           int
				Level               string
				Message             struct{ Text string }
				PartialFingerprints map[string]string
				RelatedLocations    []struct{ ID int }
				Locations           []struct {
					PhysicalLocation struct {
						ArtifactLocation struct{ URI, URIBaseID string }
						Region           struct{ StartLine, StartColumn, EndColumn int }
					}
				}
			}
		}
	}
	if err := json.Unmarshal([]byte(r.out), &log); err != nil {
		t.Fatal(err)
	}
	if log.Version != "2.1.0" || len(log.Runs) != 1 || log.Runs[0].ColumnKind != "unicodeCodePoints" || len(log.Runs[0].Results) != 1 {
		t.Fatalf("the log is not one run with one result:\n%s", r.out)
	}
	run := log.Runs[0]
	if run.Tool.Driver.Name != "ubique" || len(run.Tool.Driver.Rules) != len(catalog.All()) {
		t.Errorf("%d rules are described", len(run.Tool.Driver.Rules))
	}
	res := run.Results[0]
	if res.RuleID != "port/name-case" || run.Tool.Driver.Rules[res.RuleIndex].ID != res.RuleID || res.Level != "error" || len(res.PartialFingerprints) != 1 || len(res.RelatedLocations) < 2 {
		t.Errorf("the result is %+v", res)
	}
	at := res.Locations[0].PhysicalLocation
	if at.ArtifactLocation.URI != "a%20dir/gr%C3%B6%C3%9Fe.js" || at.Region.StartLine != 1 || at.Region.StartColumn != 16 || at.Region.EndColumn != 32 {
		t.Errorf("the result is at %+v", at)
	}
}

func TestConfiguration(t *testing.T) {
	dir := write(t, t.TempDir(), troubled)
	accept := "accept:\n  - rule: port/name-case\n    reason: the host of the dome sets it so\n"
	for name, c := range map[string]struct {
		text   string
		status int
		says   string
	}{
		"accepted":                  {accept, 0, ""},
		"accepted in this file":     {accept + "    file: server.js\n", 0, ""},
		"accepted in another file":  {accept + "    file: other.js\n", 1, ""},
		"accepted until yesterday":  {accept + "    until: 2001-01-01\n", 1, ""},
		"accepted for long":         {accept + "    until: 2999-01-01\n", 0, ""},
		"accepted without a reason": {"accept:\n  - rule: port/name-case\n", 2, "ubique.yaml:2:5"},
		"fail at never":             {"fail-at: never\n", 0, ""},
		"only the image":            {"hosts: [image]\n", 0, ""},
		"a host that there is not":  {"hosts: [moon]\n", 2, "moon"},
		"a key that there is not":   {"acept: []\n", 2, "ubique.yaml:1:1: acept is not known"},
		"not YAML":                  {"hosts: [\n", 2, "ubique.yaml"},
		"empty":                     {"", 1, ""},
	} {
		t.Run(name, func(t *testing.T) {
			write(t, dir, map[string]string{"ubique.yaml": c.text})
			if r := ubique(t, dir, "check"); r.status != c.status || !strings.Contains(r.err, c.says) {
				t.Errorf("it ends with %d, not %d: %s", r.status, c.status, r.err)
			}
		})
	}
	write(t, dir, map[string]string{"ubique.yaml": "", "server.js": "const app = require(\"express\")();\napp.listen(process.env.port || 3000); // ubique accepts port/name-case: the dome sets it so\n"})
	if r := ubique(t, dir, "check"); r.status != 0 {
		t.Errorf("a comment on the line does not accept the finding:\n%s", r.out)
	}
	write(t, dir, map[string]string{"server.js": "const app = require(\"express\")();\napp.listen(process.env.port || 3000); // ubique accepts port/literal: another rule\n"})
	if r := ubique(t, dir, "check"); r.status != 1 {
		t.Error("a comment accepts another rule's finding")
	}
}

func TestHostOfOnesOwn(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"package.json":    sound["package.json"],
		"server.js":       "require(\"express\")().listen(process.env.DOME_PORT || 3000);\n",
		"ubique.yaml":     "host-files: [hosts/hill.yaml]\n",
		"hosts/hill.yaml": "name: hill\ntitle: the server in the dome\nextends: pushed\nport:\n  how: injected\n  variable: DOME_PORT\n",
	})
	if r := ubique(t, dir, "check", "--on", "hill"); r.status != 0 {
		t.Errorf("on a host that sets DOME_PORT it ends with %d:\n%s", r.status, r.out)
	}
	if r := ubique(t, dir, "check", "--on", "pushed"); r.status != 1 || !strings.Contains(r.out, "port/other-name") {
		t.Errorf("on a host that sets PORT it ends with %d", r.status)
	}
	if r := ubique(t, dir, "hosts", "hill"); r.status != 0 || !strings.Contains(r.out, "DOME_PORT") {
		t.Errorf("the host is not explained: %s%s", r.out, r.err)
	}
	write(t, dir, map[string]string{"hosts/hill.yaml": "name: hill\ntitle: x\nroute: ftp\n"})
	if r := ubique(t, dir, "check"); r.status != 2 || !strings.Contains(r.err, "hill.yaml:3:8") {
		t.Errorf("a bad host ends with %d: %s", r.status, r.err)
	}
}

func TestSurveyWith(t *testing.T) {
	dir := write(t, t.TempDir(), sound)
	for with, want := range map[string]string{"": "listens any 3000", "PORT=5123": "listens any 5123", "PORT=": "listens any 3000", "PORT=70000": "exits "} {
		m, _ := report(t, dir, "survey", "--with", with)
		l := m["components"].([]any)[0].(map[string]any)["listeners"].([]any)[0].(map[string]any)
		u := l["under"].(map[string]any)
		got := fmt.Sprintf("%s %s", u["outcome"], u["interface"])
		if p, ok := u["port"].(float64); ok {
			got += fmt.Sprintf(" %d", int(p))
		}
		if got != want {
			t.Errorf("--with %q: it %s, not %s", with, got, want)
		}
	}
	if m, _ := report(t, dir, "survey"); m["components"].([]any)[0].(map[string]any)["listeners"].([]any)[0].(map[string]any)["under"] != nil {
		t.Error("without --with a listener is evaluated")
	}
	if r := ubique(t, dir, "survey", "--with", "PORT=5123"); !strings.Contains(r.out, "PORT=5123") || !strings.Contains(r.out, "any interface, 5123") {
		t.Errorf("the text does not say where it listens:\n%s", r.out)
	}
}

// TestColumnsOfASurvey: what ends a row does not widen a column, and the root has
// a name.
func TestColumnsOfASurvey(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"package.json":             `{"name": "dome", "private": true, "engines": {"node": "24.x"}, "main": "src/telescopes/server.js", "scripts": {"start": "node ."}}`,
		".node-version":            "24.11.0\n",
		"src/telescopes/server.js": `require("http").createServer((q, a) => a.end()).listen(process.env.PORT || 3000);`,
	})
	out := ubique(t, dir, "survey").out
	for _, want := range []string{"web  node .  package script, package.json:1:", "24.x      supported until", "24.11.0   supported until", "together  24.11.0", "3 files of the tree"} {
		if !strings.Contains(out, want) {
			t.Errorf("the survey does not hold %q:\n%s", want, out)
		}
	}
}

func TestDotenvFilesByTheirPath(t *testing.T) {
	for name, c := range map[string]struct {
		server string
		want   float64
	}{
		"named":           {`require("dotenv").config({ path: "conf/dome.env" });`, 5001},
		"from the file":   {`const path = require("path"); require("dotenv").config({ path: path.join(__dirname, "..", "conf", "dome.env") });`, 5001},
		"not named":       {`require("dotenv").config();`, 5002},
		"on import":       {`require("dotenv/config");`, 5002},
		"by a text":       {`const { config } = require("dotenv"); const at = "conf"; config({ path: at + "/dome.env" });`, 5001},
		"never read":      {``, 3000},
		"what is not one": {`const conf = { config() {} }; conf.config({ path: "conf/dome.env" });`, 3000},
	} {
		dir := write(t, t.TempDir(), map[string]string{
			"package.json":  `{ "name": "dome", "engines": { "node": "24.x" }, "scripts": { "start": "node src/server.js" }, "dependencies": { "dotenv": "17.2.3" } }`,
			"conf/dome.env": "PORT=5001\n", ".env": "PORT=5002\n",
			"src/server.js": c.server + "\nrequire(\"http\").createServer().listen(process.env.PORT || 3000);\n",
		})
		m, _ := report(t, dir, "survey", "--with", "")
		u := m["components"].([]any)[0].(map[string]any)["listeners"].([]any)[0].(map[string]any)["under"].(map[string]any)
		if u["port"] != c.want {
			t.Errorf("%s: it listens on %v, not %v", name, u["port"], c.want)
		}
	}
}

func TestDoublingIsCutShort(t *testing.T) {
	double := func(first, line, last string) string {
		var b strings.Builder
		b.WriteString(first + "\n")
		for i := range 40 {
			b.WriteString(strings.NewReplacer("NEXT", fmt.Sprintf("a%d", i+1), "A", fmt.Sprintf("a%d", i)).Replace(line) + "\n")
		}
		return b.String() + last + "\n"
	}
	const listen = "require('http').createServer().listen(a40)"
	for name, files := range map[string]map[string]string{
		"texts":            {"server.js": double("const a0 = 'xxxxxxxx';", "const NEXT = A + A;", listen)},
		"template strings": {"server.js": double("const a0 = 'xxxxxxxx';", "const NEXT = `${A}${A}`;", listen)},
		"lists":            {"server.js": double("const a0 = [1, 2];", "const NEXT = [...A, ...A];", "require('http').createServer().listen(a40[0])")},
		"objects":          {"server.js": double("const a0 = { port: 1 };", "const NEXT = { ...A, ...A };", "require('http').createServer().listen(a40.port)")},
		"shell variables":  {"server.js": "require('http').createServer().listen(process.env.PORT)\n", "Procfile": "web: sh go.sh\n", "go.sh": double("a0=xxxxxxxx", `NEXT="$A$A"`, "PORT=$a40 exec node server.js")},
		"two mains":        {"server.js": "require('./a');\nrequire('http').createServer().listen(process.env.PORT)\n", "a/package.json": `{ "main": "../b" }`, "b/package.json": `{ "main": "../a" }`},
		"shell functions":  {"server.js": "require('http').createServer().listen(process.env.PORT)\n", "Procfile": "web: sh go.sh\n", "go.sh": double("", "A() { NEXT; NEXT; NEXT; }", "a0; exec node server.js")},
	} {
		files["package.json"] = `{ "name": "dome", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" } }`
		dir := write(t, t.TempDir(), files)
		m, r := report(t, dir, "check", "--fail-at", "never")
		if r.status != 0 {
			t.Errorf("%s: it ends with %d:\n%.400s", name, r.status, r.err)
		}
		if len(m["components"].([]any)) != 1 {
			t.Errorf("%s: the component is lost", name)
		}
	}
}

func TestMatrix(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"good/package.json": sound["package.json"], "good/server.js": sound["server.js"],
		"bad/package.json": sound["package.json"], "bad/server.js": troubled["server.js"],
		"odd/package.json": sound["package.json"], "odd/server.js": "const http = require(\"http\");\nhttp.createServer().listen(choose());\nfunction choose() { return Math.random() }\n",
	})
	m, r := report(t, dir, "matrix")
	got := map[string]string{}
	for _, x := range m["verdicts"].([]any) {
		v := x.(map[string]any)
		got[v["component"].(string)+" "+v["host"].(string)] = v["verdict"].(string)
	}
	for cell, want := range map[string]string{"good pushed": "ready", "good image": "not applicable", "bad pushed": "blocked", "odd pushed": "unknown"} {
		if got[cell] != want {
			t.Errorf("%s is %q, not %q", cell, got[cell], want)
		}
	}
	if r.status != 1 {
		t.Errorf("it ends with %d", r.status)
	}
	text := ubique(t, dir, "matrix").out
	for _, want := range []string{"● ready", "○ blocked", "? unknown", "– not applicable", "port/name-case, reads the port from port"} {
		if !strings.Contains(text, want) {
			t.Errorf("the table does not show %q:\n%s", want, text)
		}
	}
}

func TestTheTreeChoosesItsKind(t *testing.T) {
	dir := write(t, t.TempDir(), map[string]string{
		"requirements.txt": "flask==3.1.2\ngunicorn==23.0.0\n",
		"app.py":           "from flask import Flask\napp = Flask(__name__)\n",
		"Dockerfile":       "FROM python:3.13-slim\nWORKDIR /srv\nCOPY . .\nRUN pip install -r requirements.txt\nCMD [\"gunicorn\", \"--bind\", \"0.0.0.0:8000\", \"app:app\"]\n",
	})
	m, r := report(t, dir, "check")
	if n := len(m["findings"].([]any)); n != 0 || r.status != 0 {
		t.Errorf("a tree with a container file alone has %d findings, status %d:\n%s", n, r.status, r.out)
	}
	for _, x := range m["verdicts"].([]any) {
		v := x.(map[string]any)
		if v["host"] == "pushed" && (v["verdict"] != "not applicable" || !strings.Contains(v["reason"].(string), "Dockerfile says how to start it on image")) {
			t.Errorf("on pushed it is %v: %v", v["verdict"], v["reason"])
		}
	}
	if text := ubique(t, dir, "check").out; !strings.Contains(text, ", on image.") || !strings.Contains(text, "Not judged: pushed (no process file") {
		t.Errorf("the summary does not say what was judged:\n%s", text)
	}
	m, r = report(t, dir, "check", "--on", "pushed")
	if f := m["findings"].([]any); r.status != 1 || !slices.ContainsFunc(f, func(x any) bool { return x.(map[string]any)["rule"] == "start/missing" }) {
		t.Errorf("who asks for pushed is not told that nothing starts it: status %d, %v", r.status, f)
	}
}

func TestRulesAreExplained(t *testing.T) {
	dir := t.TempDir()
	list := ubique(t, dir, "rules").out
	for _, r := range catalog.All() {
		if !strings.Contains(list, r.ID) || !strings.Contains(list, r.Title) {
			t.Errorf("%s is not listed", r.ID)
		}
		one := ubique(t, dir, "rules", r.ID)
		for _, want := range []string{r.ID, "Why hosts care", "Bad:", "Good:", "When to ignore it"} {
			if one.status != 0 || !strings.Contains(one.out, want) {
				t.Errorf("the explanation of %s does not say %q", r.ID, want)
			}
		}
		page, err := os.ReadFile(filepath.Join("..", "..", "docs", "rules", filepath.FromSlash(r.ID)+".md"))
		if err != nil || !strings.Contains(string(page), strings.TrimSpace(r.Doc)) {
			t.Errorf("the page of %s is stale: run go generate ./... (%v)", r.ID, err)
		}
	}
	if family := ubique(t, dir, "rules", "port").out; !strings.Contains(family, "port/literal") || strings.Contains(family, "pin/missing") {
		t.Errorf("a family lists:\n%s", family)
	}
}

func TestDemo(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "new", "observatory")
	r := ubique(t, t.TempDir(), "demo", dir)
	if r.status != 0 || !strings.Contains(r.out, "The demo tree is in "+dir) || !strings.Contains(r.out, "Try next:") {
		t.Fatalf("the demo ends with %d:\n%s%s", r.status, r.out, r.err)
	}
	m, _ := report(t, dir, "check")
	if m["tree"].(map[string]any)["route"] != "git" {
		t.Error("the demo tree has no git index")
	}
	found := map[string][]string{}
	for _, x := range m["findings"].([]any) {
		f := x.(map[string]any)
		found[f["component"].(string)] = append(found[f["component"].(string)], f["rule"].(string))
	}
	for component, rules := range map[string][]string{
		"bookings": {"ship/untracked", "ship/dependencies", "port/name-case", "port/mismatch", "manifest/dev-only", "secret/in-source"},
		"visitors": {"start/dev-server", "settings/debug", "settings/hosts-open", "pin/disagree", "start/release-unsafe"},
		"forecast": {"start/callable-missing", "port/loopback", "manifest/undeclared", "secret/file-shipped", "env/near-miss"},
	} {
		for _, rule := range rules {
			if !strings.Contains(strings.Join(found[component], " "), rule) {
				t.Errorf("%s shows no %s: %v", component, rule, found[component])
			}
		}
	}
	for _, component := range []string{"catalogue", "ticker", "gate", "starmap"} {
		if len(found[component]) > 0 {
			t.Errorf("%s is sound, and %v is found", component, found[component])
		}
	}
	if git, err := exec.LookPath("git"); err == nil {
		out, err := exec.Command(git, "-C", dir, "status", "--porcelain").CombinedOutput()
		if err != nil || !strings.Contains(string(out), "?? bookings/src/nights.js") || strings.Count(string(out), "??") != 1 {
			t.Errorf("git does not see one untracked file: %v\n%s", err, out)
		}
	}
	if again := ubique(t, t.TempDir(), "demo", dir); again.status != 2 {
		t.Errorf("a demo over a demo ends with %d", again.status)
	}
}

func TestNothingIsWritten(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "observatory")
	if err := demo.Write(dir); err != nil {
		t.Fatal(err)
	}
	snapshot := func() string {
		var b strings.Builder
		err := filepath.WalkDir(dir, func(p string, d os.DirEntry, err error) error {
			if err != nil {
				return err
			}
			info, err := d.Info()
			if err != nil {
				return err
			}
			fmt.Fprintln(&b, p, info.Size(), info.Mode(), info.ModTime().UnixNano())
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
		return b.String()
	}
	before := snapshot()
	for _, args := range [][]string{{"check"}, {"survey", "--with", "PORT=1"}, {"matrix"}, {"check", "--format", "sarif"}} {
		ubique(t, dir, args...)
	}
	if snapshot() != before {
		t.Error("the tree was written to")
	}
}
