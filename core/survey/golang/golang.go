// Package golang surveys Go components: go.mod, go.work, go.sum, the main
// packages and the modules that they import (Go modules reference, read
// 2026-11).
package golang

import (
	"path"
	"sort"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Go.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Go for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "go" }

// frameworks are modules that make a program a server, by the name to show.
var frameworks = [][2]string{
	{"github.com/gin-gonic/gin", "Gin"}, {"github.com/labstack/echo/v4", "Echo"}, {"github.com/labstack/echo", "Echo"}, {"github.com/gofiber/fiber/v2", "Fiber"}, {"github.com/gofiber/fiber/v3", "Fiber"}, {"github.com/go-chi/chi/v5", "chi"},
	{"github.com/go-chi/chi", "chi"}, {"github.com/gorilla/mux", "gorilla/mux"}, {"github.com/julienschmidt/httprouter", "httprouter"}, {"github.com/valyala/fasthttp", "fasthttp"}, {"google.golang.org/grpc", "gRPC"}, {"connectrpc.com/connect", "Connect"}, {"github.com/danielgtaylor/huma/v2", "Huma"},
}

// Mains lists the folders of main packages of a module, the root first.
func mains(t *source.Tree, dir string) []string {
	seen := map[string]bool{}
	var list []string
	for _, e := range t.Below(dir) {
		if !strings.HasSuffix(e.Path, ".go") || strings.HasSuffix(e.Path, "_test.go") || !e.OnDisk {
			continue
		}
		d := source.Dir(e.Path)
		rel := strings.TrimPrefix(strings.TrimPrefix(d, dir), "/")
		if seen[d] || strings.Count(rel, "/") > 3 || elsewhere(rel) || other(t, dir, d) {
			continue
		}
		if f, err := t.Code(e.Path); err == nil && isMain(string(f.Data)) {
			seen[d] = true
			list = append(list, d)
		}
	}
	sort.Strings(list)
	return list
}

// other reports whether a folder belongs to another module below the one.
func other(t *source.Tree, module, dir string) bool {
	for d := dir; d != module && d != ""; d = source.Dir(d) {
		if t.Has(survey.Join(d, "go.mod")) {
			return true
		}
	}
	return false
}

// elsewhere tells folders whose programs are not deployed.
func elsewhere(rel string) bool {
	for part := range strings.SplitSeq(rel, "/") {
		switch part {
		case "testdata", "vendor", "examples", "example", "tools", "hack", "scripts", "docs", "internal", "node_modules", "test", "tests", "e2e", "bench", "benchmark", "benchmarks":
			return true
		}
		if strings.HasPrefix(part, "_") || len(part) > 1 && part[0] == '.' {
			return true
		}
	}
	return false
}

// isMain looks for the clause `package main` before the first declaration, and
// for a build constraint that keeps the file out.
func isMain(src string) bool {
	for line := range strings.SplitSeq(src, "\n") {
		s := strings.TrimSpace(line)
		switch {
		case strings.HasPrefix(s, "//go:build ignore"), strings.HasPrefix(s, "// +build ignore"):
			return false
		case s == "package main", strings.HasPrefix(s, "package main "), strings.HasPrefix(s, "package main;"), strings.HasPrefix(s, "package main/"):
			return true
		case strings.HasPrefix(s, "package "):
			return false
		}
	}
	return false
}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	if !f.Has("go.mod") {
		if f.Dir == "" && !f.Has("go.work") || f.Has("Dockerfile") || f.Has("Procfile") {
			if f.Has("main.go") && survey.Mentions(t, survey.Join(f.Dir, "main.go"), "package main") && !below(t, f.Dir) {
				return 2
			}
		}
		return 0
	}
	if len(mains(t, f.Dir)) > 0 {
		return 2
	}
	return 1
}

// below reports whether a folder lies in a module.
func below(t *source.Tree, dir string) bool {
	for d := dir; d != ""; {
		d = source.Dir(d)
		if t.Has(survey.Join(d, "go.mod")) {
			return true
		}
	}
	return false
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	name := c.Path("go.mod")
	if t.Has(name) {
		r.module(t, c, name)
	}
	survey.TakeLocks(t, c, r.locks, false, "go")
	if t.Has("go.work.sum") && t.Has("go.work") { // a workspace keeps sums of its own
		c.HasLock = true
		c.Locks = nil
	}
	if work := survey.Join("", "go.work"); t.Has(work) && c.Dir != "" {
		if file, err := t.Code(work); err == nil {
			for _, l := range document.PlainLines(work, file.Data, file.Lines()) {
				directive(c, l, "go", "go.mod")
				directive(c, l, "toolchain", "go toolchain")
			}
		}
	}
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "go")...)
	survey.FrameworksOf(c, frameworks)
	for _, d := range mains(t, c.Dir) {
		rel := strings.TrimPrefix(strings.TrimPrefix(d, c.Dir), "/")
		base := path.Base(d)
		pkg := "./" + rel
		if rel == "" {
			base, pkg = c.Root, "."
			if base == "" {
				base = "app"
			}
		}
		c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "binary", Path: base, Build: "go build " + pkg, At: place.Whole(survey.Join(d, "main.go"))})
	}
	c.Root = ""
}

func directive(c *fact.Component, l document.Line, word, from string) {
	rest, ok := strings.CutPrefix(l.Text, word+" ")
	if !ok {
		return
	}
	rest, _, _ = strings.Cut(rest, "//")
	rest = strings.TrimSpace(rest)
	at := l.At
	at.Col += strings.Index(l.Text, rest)
	at.EndCol = at.Col + len(rest)
	c.Pins = append(c.Pins, survey.ReadPin("go", from, rest, survey.RankManifest, at))
}

// module reads go.mod.
func (r *Runtime) module(t *source.Tree, c *fact.Component, name string) {
	f, err := t.Document(name)
	if err != nil {
		c.Complete, c.Broken = false, true
		return
	}
	c.Manifests = append(c.Manifests, &fact.Manifest{File: name, Manager: "go"})
	block := ""
	replaced := map[string]bool{}
	for _, l := range document.PlainLines(name, f.Data, f.Lines()) {
		text, note, _ := strings.Cut(l.Text, "//")
		text = strings.TrimSpace(text)
		if text == ")" {
			block = ""
			continue
		}
		word, rest, _ := strings.Cut(text, " ")
		rest = strings.TrimSpace(rest)
		if rest == "(" {
			block = word
			continue
		}
		if block != "" {
			word, rest = block, text
		}
		switch word {
		case "module":
			c.Root = lastPart(strings.Trim(rest, `"`))
		case "go":
			directive(c, l, "go", "go.mod")
		case "toolchain":
			directive(c, l, "toolchain", "go toolchain")
		case "require":
			fields := strings.Fields(rest)
			if len(fields) < 2 {
				continue
			}
			at := l.At
			at.Col += strings.Index(l.Text, fields[0])
			at.EndCol = at.Col + len(rest)
			d := fact.Dependency{Name: strings.Trim(fields[0], `"`), Spec: fields[1], File: name, At: at, Pinned: true, Exact: true}
			if strings.Contains(note, "indirect") {
				d.Group = "indirect"
			}
			c.Dependencies = append(c.Dependencies, d)
		case "replace":
			from, to, ok := strings.Cut(rest, "=>")
			if to = strings.TrimSpace(to); ok {
				replaced[strings.Fields(from)[0]] = true
				if p := strings.Fields(to)[0]; strings.HasPrefix(p, "..") || strings.HasPrefix(p, "/") {
					if _, in := source.Join(c.Dir, p); !in {
						at := l.At
						at.Col += strings.Index(l.Text, p)
						at.EndCol = at.Col + len(p)
						c.Outside = append(c.Outside, fact.Path{Text: p, At: at})
					}
				}
			}
		}
	}
	worked := map[string]bool{}
	for dir := c.Dir; ; dir = source.Dir(dir) { // modules of the workspace are used from the tree
		for _, w := range worded(t, survey.Join(dir, "go.work"), "use") {
			if p, ok := source.Join(dir, strings.Trim(w, `"`)); ok {
				worked[named(t, survey.Join(p, "go.mod"))] = true
			}
		}
		if dir == "" {
			break
		}
	}
	for i := range c.Dependencies {
		d := &c.Dependencies[i]
		d.Linked = replaced[d.Name] || worked[d.Name]
		// go.sum must have just this version.
		if v, ok := version.Parse(d.Spec); ok && !strings.Contains(d.Spec, "-0.") && v.Pre == "" {
			d.Set, d.Known = version.Go(strings.TrimPrefix(strings.TrimSuffix(d.Spec, "+incompatible"), "v"))
		}
	}
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, dir string) survey.Modules {
	m := &modules{t: t, c: c}
	for d := c.Dir; ; d = source.Dir(d) {
		if name := survey.Join(d, "go.mod"); t.Has(name) {
			m.dir = d
			m.module = named(t, name)
			m.replaced(name)
			break
		}
		if d == "" {
			break
		}
	}
	for d := m.dir; ; d = source.Dir(d) {
		if work := survey.Join(d, "go.work"); t.Has(work) {
			for _, w := range worded(t, work, "use") {
				if dir, ok := source.Join(d, strings.Trim(w, `"`)); ok {
					if module := named(t, survey.Join(dir, "go.mod")); module != "" && module != m.module {
						m.others = append(m.others, stand{module, dir})
					}
				}
			}
			m.replaced(work)
			break
		}
		if d == "" {
			break
		}
	}
	return m
}

type modules struct {
	t           *source.Tree
	c           *fact.Component
	dir, module string
	others      []stand // those of the tree that stand in for modules from outside
}

// stand is a module and its folder in the tree.
type stand struct{ path, dir string }

// named is the path of the module of a go.mod; empty where that is not there.
func named(t *source.Tree, file string) string {
	if list := worded(t, file, "module"); len(list) > 0 {
		return strings.Trim(list[0], `"`)
	}
	return ""
}

// worded gives what stands behind a word in go.mod or go.work: on its line, or on each
// line of its block (Go Modules Reference, "go.mod files" and "go.work files").
func worded(t *source.Tree, file, word string) (list []string) {
	if !t.Has(file) {
		return nil
	}
	f, err := t.Document(file)
	if err != nil {
		return nil
	}
	in := false
	for _, l := range document.PlainLines(file, f.Data, f.Lines()) {
		text, _, _ := strings.Cut(l.Text, "//")
		text = strings.TrimSpace(text)
		rest, ok := strings.CutPrefix(text, word)
		switch rest = strings.TrimSpace(rest); {
		case text == ")":
			in = false
		case in && text != "":
			list = append(list, text)
		case !ok:
		case rest == "(":
			in = true
		case rest != "" && len(text) > len(word) && strings.ContainsAny(text[len(word):len(word)+1], " \t\""):
			list = append(list, rest)
		}
	}
	return list
}

// replaced notes the modules for which a file says that a folder of the tree stands in.
func (m *modules) replaced(file string) {
	for _, r := range worded(m.t, file, "replace") {
		from, to, ok := strings.Cut(r, "=>")
		if !ok || len(strings.Fields(from)) == 0 || len(strings.Fields(to)) != 1 {
			continue
		}
		if dir, in := source.Join(source.Dir(file), strings.Trim(strings.TrimSpace(to), `"`)); in && m.t.Has(survey.Join(dir, "go.mod")) {
			m.others = append(m.others, stand{strings.Trim(strings.Fields(from)[0], `"`), dir})
		}
	}
}

// inside gives the folder of a package of the module itself, or of one of the tree that
// it uses.
func (m *modules) inside(pkg string) (string, bool) {
	var in stand
	for _, o := range append([]stand{{m.module, m.dir}}, m.others...) { // the longest path counts
		if len(o.path) > len(in.path) && (pkg == o.path || strings.HasPrefix(pkg, o.path+"/")) {
			in = o
		}
	}
	if in.path == "" {
		return "", false
	}
	return survey.Join(in.dir, strings.TrimPrefix(pkg[len(in.path):], "/")), true
}

func (m *modules) files(dir string) []string {
	var list []string
	for _, e := range m.t.In(strings.TrimSuffix(dir, "/")) {
		if strings.HasSuffix(e.Path, ".go") && !strings.HasSuffix(e.Path, "_test.go") && e.OnDisk {
			list = append(list, e.Path)
		}
	}
	return list
}

// Resolve implements survey.Modules.
func (m *modules) Resolve(from *code.File, pkg, name string) (string, bool) {
	dir, ok := m.inside(pkg)
	if !ok {
		return "", false
	}
	list := m.files(dir)
	for _, p := range list {
		if f, err := m.t.Code(p); err == nil && name != "" && strings.Contains(string(f.Data), name) {
			return p, true
		}
	}
	if len(list) > 0 {
		return list[0], true
	}
	return "", false
}

// Classify implements survey.Modules: packages whose path has no dot in its
// first part are of the standard library ("go help packages").
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp)}
	if dir, ok := m.inside(imp.Name); ok {
		var list []fact.Import
		for _, p := range m.files(dir) {
			x := i
			x.File = p
			list = append(list, x)
		}
		if len(list) == 0 {
			for _, e := range m.t.Below(m.dir) {
				if d := source.Dir(e.Path); d != dir && strings.EqualFold(d, dir) && strings.HasSuffix(e.Path, ".go") {
					i.Case = e.Path
					break
				}
			}
			i.Missing = m.t.HasDir(m.dir) && !strings.Contains(dir, "gen") && !m.t.HasDir(dir)
			return []fact.Import{i}
		}
		return list
	}
	first, _, _ := strings.Cut(imp.Name, "/")
	if !strings.Contains(first, ".") || imp.Name == "C" || imp.Name == "unsafe" {
		i.Standard = true
		return []fact.Import{i}
	}
	// The longest module path that is a prefix gives the package.
	for _, d := range m.c.Dependencies {
		if imp.Name == d.Name || strings.HasPrefix(imp.Name, d.Name+"/") {
			i.Package = d.Name
			return []fact.Import{i}
		}
	}
	// A module of the workspace is used without being required.
	for _, e := range m.t.Entries {
		if path.Base(e.Path) == "go.mod" && e.OnDisk {
			if f, err := m.t.Document(e.Path); err == nil {
				line, _, _ := strings.Cut(string(f.Data), "\n")
				if mod, ok := strings.CutPrefix(strings.TrimSpace(line), "module "); ok && (imp.Name == mod || strings.HasPrefix(imp.Name, mod+"/")) {
					i.Standard = true
					return []fact.Import{i}
				}
			}
		}
	}
	parts := strings.SplitN(imp.Name, "/", 4)
	i.Package = strings.Join(parts[:min(3, len(parts))], "/")
	return []fact.Import{i}
}

// Entry implements survey.Runtime: hosts build the main package and run it.
// With several, the one that is named as the server's.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	dir, ok := chosen(t, c)
	if !ok {
		return "", "", false
	}
	rel := strings.TrimPrefix(strings.TrimPrefix(dir, c.Dir), "/")
	files := (&modules{t: t}).files(dir)
	at := survey.Join(dir, "main.go")
	if len(files) > 0 && !t.Has(at) {
		at = files[0]
	}
	if rel == "" {
		return "go run .", at, true
	}
	return "go run ./" + rel, at, true
}

// moduleName is the last part of the module's path, without its major version.
func moduleName(t *source.Tree, c *fact.Component) string {
	name := c.Path("go.mod")
	f, err := t.Document(name)
	if err != nil || !t.Has(name) {
		return ""
	}
	for _, l := range document.PlainLines(name, f.Data, f.Lines()) {
		if rest, ok := strings.CutPrefix(l.Text, "module "); ok {
			return lastPart(strings.Trim(strings.TrimSpace(rest), `"`))
		}
	}
	return ""
}

func lastPart(module string) string {
	base := path.Base(module)
	if strings.HasPrefix(base, "v") && len(base) > 1 && strings.Trim(base[1:], "0123456789") == "" {
		return path.Base(path.Dir(module))
	}
	return base
}

// chosen is the folder of the main package that a host would run.
func chosen(t *source.Tree, c *fact.Component) (string, bool) {
	list := mains(t, c.Dir)
	if len(list) == 0 {
		return "", false
	}
	if len(list) == 1 || list[0] == c.Dir {
		return list[0], true
	}
	for _, want := range []string{moduleName(t, c), "server", "web", "api", "app", "http", "main", path.Base(c.Dir)} {
		for _, d := range list {
			if path.Base(d) == want {
				return d, true
			}
		}
	}
	return list[0], true
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	cmd, _, ok := r.Entry(t, c)
	return cmd, ok
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }

// Target implements survey.Targeter: go run PACKAGE, and binaries that a build
// of the component makes.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if f.Known != nil && f.Known.Name == "go" {
		free := f.Free()
		if len(free) == 0 || free[0].Text != "run" {
			return nil, "", false
		}
		word, named := free[0], "."
		if len(free) > 1 {
			word, named = free[1], free[1].Text
		}
		tg := &fact.Target{Named: named, At: word.At, Kind: command.FileTarget}
		for i, w := range f.Args {
			if w.At == word.At {
				tg.Args = f.Args[i+1:]
			}
		}
		p, ok := source.Join(f.Dir, named)
		if !ok {
			return nil, named + " lies outside the tree", true
		}
		if strings.HasSuffix(named, ".go") {
			if t.Has(p) {
				tg.File = p
			}
			return tg, "", true
		}
		tg.File = mainFile(t, p)
		return tg, "", true
	}
	base := path.Base(f.Path)
	for _, a := range c.Artefacts {
		dir := source.Dir(a.At.File)
		if a.Path == base {
			return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: survey.Join(c.Dir, f.Path), Sourced: mainFile(t, dir), Args: f.Args}, "", true
		}
	}
	if dir, ok := chosen(t, c); ok && f.Known == nil && (strings.HasPrefix(f.Path, "./") || strings.HasPrefix(f.Path, "bin/") || strings.HasPrefix(f.Path, "/")) {
		return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: survey.Join(c.Dir, base), Sourced: mainFile(t, dir), Args: f.Args}, "", true
	}
	return nil, "", false
}

// mainFile is the file of a folder that holds func main.
func mainFile(t *source.Tree, dir string) string {
	first := ""
	for _, p := range (&modules{t: t}).files(dir) {
		if first == "" {
			first = p
		}
		if survey.Mentions(t, p, "func main()") {
			return p
		}
	}
	return first
}
