// Package deno surveys Deno components: deno.json, its tasks and its import
// map (Deno documentation, "Configuration file", read 2026-11).
package deno

import (
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Deno.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Deno for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "deno" }

var frameworks = [][2]string{{"@fresh/core", "Fresh"}, {"$fresh/", "Fresh"}, {"@oak/oak", "Oak"}, {"oak", "Oak"}, {"hono", "Hono"}, {"@hono/hono", "Hono"}, {"express", "Express"}}

var usual = []string{"main.ts", "server.ts", "app.ts", "mod.ts", "index.ts", "main.js", "server.js", "main.tsx", "src/main.ts", "src/server.ts"}

func config(f survey.Folder) string {
	for _, n := range []string{"deno.json", "deno.jsonc"} {
		if f.Has(n) {
			return n
		}
	}
	return ""
}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	cfg := config(f)
	serves := false
	for _, n := range usual {
		serves = serves || survey.Mentions(t, survey.Join(f.Dir, n), "Deno.serve", "jsr:", "https://deno.land/", "Deno.listen", "Deno.env")
	}
	switch {
	case f.Has("package.json") && (cfg == "" || !survey.Mentions(t, survey.Join(f.Dir, cfg), `"start"`) || survey.Mentions(t, survey.Join(f.Dir, "package.json"), `"start"`)):
		return 0 // Node.js has it, whatever else reads the folder
	case cfg != "" && (serves || survey.Mentions(t, survey.Join(f.Dir, cfg), `"tasks"`, `"start"`)):
		return 2
	case cfg != "":
		return 1
	case serves && (f.Dir == "" || f.Has("Procfile") || f.Has("Dockerfile")):
		return 2
	}
	return 0
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	if n := config(f); n != "" {
		file := c.Path(n)
		d, broken := survey.Document(t, file)
		if broken {
			c.Complete, c.Broken = false, true
		}
		c.Manifests = append(c.Manifests, &fact.Manifest{File: file, Manager: "deno"})
		c.Scripts = map[string]command.Script{}
		for _, x := range d.Get("tasks").Items() {
			v := x
			if x.Kind == document.Map {
				v = x.Get("command")
			}
			if v.Str() != "" {
				c.Scripts[x.Key] = command.Script{Text: v.Text, At: survey.Inside(v.At())}
			}
		}
		imports := d.Get("imports")
		if imports == nil {
			if m := d.Get("importMap").Str(); m != "" {
				if p, ok := source.Join(c.Dir, m); ok {
					im, _ := survey.Document(t, p)
					imports = im.Get("imports")
				}
			}
		}
		for _, x := range imports.Items() {
			scheme, rest, ok := strings.Cut(x.Str(), ":")
			if !ok || scheme != "npm" && scheme != "jsr" {
				continue
			}
			name, spec := rest, ""
			if i := strings.LastIndexByte(strings.TrimPrefix(rest, "/"), '@'); i > 0 {
				rest = strings.TrimPrefix(rest, "/")
				name, spec = rest[:i], rest[i+1:]
			}
			spec, _, _ = strings.Cut(spec, "/")
			dep := survey.Declare(name, spec, version.NPM, file, survey.Inside(x.At()))
			dep.Linked = true // the lock holds it under its address
			c.Dependencies = append(c.Dependencies, dep)
		}
	}
	survey.TakeLocks(t, c, r.locks, false, "deno")
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "deno")...)
	survey.FrameworksOf(c, frameworks)
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, _ string) survey.Modules {
	m := &modules{t: t, c: c, names: map[string]string{}}
	for _, n := range []string{"deno.json", "deno.jsonc"} {
		if d, _ := survey.Document(t, c.Path(n)); d != nil {
			for _, x := range d.Get("imports").Items() {
				m.names[x.Key] = x.Str()
			}
		}
	}
	return m
}

type modules struct {
	t     *source.Tree
	c     *fact.Component
	names map[string]string
}

// Resolve implements survey.Modules: relative paths with their extension, and
// names of the import map that lead to files.
func (m *modules) Resolve(from *code.File, name, _ string) (string, bool) {
	dir := source.Dir(from.Name)
	if to, ok := m.names[name]; ok {
		name, dir = to, m.c.Dir
	} else {
		for k, to := range m.names {
			if strings.HasSuffix(k, "/") && strings.HasPrefix(name, k) {
				name, dir = to+strings.TrimPrefix(name, k), m.c.Dir
			}
		}
	}
	if !strings.HasPrefix(name, ".") {
		return "", false
	}
	p, ok := source.Join(dir, name)
	if ok && m.t.Has(p) {
		return p, true
	}
	return "", false
}

// Classify implements survey.Modules: what is imported by its address needs no
// declaration.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp), TypeOnly: imp.Flag&code.TypeOnly != 0}
	if p, ok := m.Resolve(from, imp.Name, ""); ok {
		i.File = p
		return []fact.Import{i}
	}
	if strings.HasPrefix(imp.Name, "./") || strings.HasPrefix(imp.Name, "../") {
		i.Relative = true
		p, in := source.Join(source.Dir(from.Name), imp.Name)
		i.Missing = in
		if e, ok := m.t.Fold(p); ok {
			i.Case = e.Path
		}
		return []fact.Import{i}
	}
	if strings.Contains(imp.Name, ":") || m.names[imp.Name] != "" {
		i.Standard = true
		return []fact.Import{i}
	}
	for k := range m.names {
		if strings.HasPrefix(imp.Name, k) && (strings.HasSuffix(k, "/") || strings.HasPrefix(imp.Name, k+"/")) {
			i.Standard = true
			return []fact.Import{i}
		}
	}
	i.Package = imp.Name
	return []fact.Import{i}
}

// Entry implements survey.Runtime: the task named start.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	if s, ok := c.Scripts["start"]; ok {
		return s.Text, s.At.File, true
	}
	return "", "", false
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	for _, n := range usual {
		if t.Has(c.Path(n)) {
			return "deno run " + n, true
		}
	}
	return "", false
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }
