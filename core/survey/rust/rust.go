// Package rust surveys Rust components: Cargo packages and workspaces, the
// toolchain file, the binaries that a build makes (The Cargo Book; The rustup
// book; read 2026-11).
package rust

import (
	"path"
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

// Runtime is the survey of Rust.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Rust for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "rust" }

var frameworks = [][2]string{{"axum", "Axum"}, {"actix-web", "Actix Web"}, {"rocket", "Rocket"}, {"warp", "warp"}, {"poem", "Poem"}, {"salvo", "Salvo"}, {"tide", "Tide"}, {"hyper", "hyper"}, {"tonic", "tonic"}, {"gotham", "Gotham"}, {"leptos", "Leptos"}, {"tiny_http", "tiny_http"}}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	if !f.Has("Cargo.toml") {
		return 0
	}
	d, broken := survey.Document(t, survey.Join(f.Dir, "Cargo.toml"))
	switch {
	case broken:
		return 2
	case d.Get("package") == nil:
		return 1 // a workspace alone
	case len(binaries(t, f.Dir, d)) > 0:
		return 2
	}
	return 1
}

// binary is a program that a package makes.
type binary struct {
	name, file string
	at         place.Span
}

// binaries lists the programs of a package ("Cargo Targets").
func binaries(t *source.Tree, dir string, d *document.Node) []binary {
	var list []binary
	at := d.Get("package", "name").At()
	for _, b := range d.Get("bin").Items() {
		name := b.Get("name").Str()
		file := b.Get("path").Str()
		if file == "" {
			if file = "src/bin/" + name + ".rs"; !t.Has(survey.Join(dir, file)) {
				file = "src/main.rs"
			}
		}
		list = append(list, binary{name, survey.Join(dir, file), b.Get("name").At()})
	}
	known := func(file string) bool {
		for _, b := range list {
			if b.file == file {
				return true
			}
		}
		return false
	}
	if main := survey.Join(dir, "src/main.rs"); t.Has(main) && !known(main) {
		list = append([]binary{{d.Get("package", "name").Str(), main, at}}, list...)
	}
	for _, e := range t.Below(survey.Join(dir, "src/bin")) {
		rel := strings.TrimPrefix(e.Path, survey.Join(dir, "src/bin")+"/")
		switch {
		case known(e.Path):
		case strings.HasSuffix(rel, ".rs") && !strings.Contains(rel, "/"):
			list = append(list, binary{strings.TrimSuffix(rel, ".rs"), e.Path, at})
		case strings.HasSuffix(rel, "/main.rs") && strings.Count(rel, "/") == 1:
			list = append(list, binary{strings.TrimSuffix(rel, "/main.rs"), e.Path, at})
		}
	}
	return list
}

// workspace finds the manifest of the workspace above a package.
func workspace(t *source.Tree, dir string) (root string, d *document.Node) {
	for at := dir; ; at = source.Dir(at) {
		if w, _ := survey.Document(t, survey.Join(at, "Cargo.toml")); w.Get("workspace") != nil {
			return at, w
		}
		if at == "" {
			return "", nil
		}
	}
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, _ survey.Folder) {
	c.Complete = true
	file := c.Path("Cargo.toml")
	d, broken := survey.Document(t, file)
	if broken {
		c.Complete, c.Broken = false, true
	}
	c.Manifests = append(c.Manifests, &fact.Manifest{File: file, Manager: "cargo"})
	root, w := workspace(t, c.Dir)
	inherited := func(keys ...string) *document.Node {
		n := d.Get(keys...)
		if n.Get("workspace") != nil {
			return w.Get(append([]string{"workspace"}, keys...)...)
		}
		return n
	}
	if v := inherited("package", "rust-version"); v.Str() != "" {
		c.Pins = append(c.Pins, survey.ReadPin("rust", "rust-version", v.Text, survey.RankManifest, survey.Inside(v.At())))
	}
	tables := []*document.Node{d}
	for _, x := range d.Get("target").Items() {
		tables = append(tables, x)
	}
	for i, table := range tables {
		for _, kind := range []string{"dependencies", "dev-dependencies", "build-dependencies"} {
			for _, x := range table.Get(kind).Items() {
				r.dependency(t, c, file, kind, x, w, i > 0)
			}
		}
	}
	survey.TakeLocks(t, c, r.locks, true, "cargo")
	if c.HasLock && c.LockDir != c.Dir && c.LockDir != root {
		c.Locks, c.HasLock, c.LockDir = nil, false, ""
		c.Manifests[0].Lock = ""
	}
	r.toolchain(t, c)
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "rust")...)
	survey.FrameworksOf(c, frameworks)
	out := "target/release"
	if w != nil {
		out = survey.Join(root, out)
	} else {
		out = c.Path(out)
	}
	for _, b := range binaries(t, c.Dir, d) {
		c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "binary", Path: survey.Join(out, b.name), Build: "cargo build --release", At: b.at, Detail: b.file})
	}
}

func (r *Runtime) dependency(t *source.Tree, c *fact.Component, file, kind string, x, w *document.Node, conditional bool) {
	spec, real := x.Str(), ""
	local := false
	if x.Kind == document.Map {
		y := x
		if ws := x.Get("workspace"); ws != nil {
			if y = w.Get("workspace", "dependencies", x.Key); y == nil {
				y = x
			}
			spec = y.Str()
		}
		if y.Kind == document.Map {
			spec = y.Get("version").Str()
			real = y.Get("package").Str()
			local = y.Get("path") != nil || y.Get("git") != nil
			if p := y.Get("path"); p.Str() != "" && y == x {
				if _, in := source.Join(c.Dir, p.Text); !in {
					c.Outside = append(c.Outside, fact.Path{Text: p.Text, At: survey.Inside(p.At())})
				}
			}
		}
	}
	d := survey.Declare(x.Key, spec, version.Cargo, file, x.KeyAt())
	d.Dev = kind == "dev-dependencies"
	d.Group, d.Real, d.Linked = kind, real, local
	d.Pinned = d.Pinned || local
	d.Exact = strings.HasPrefix(spec, "=")
	if o := x.Get("optional"); o != nil && o.Text == "true" {
		d.Optional = true
	}
	if conditional {
		d.Marker = "a target"
	}
	c.Dependencies = append(c.Dependencies, d)
}

// toolchain reads rust-toolchain.toml and the older rust-toolchain.
func (r *Runtime) toolchain(t *source.Tree, c *fact.Component) {
	for dir := c.Dir; ; dir = source.Dir(dir) {
		if name := survey.Join(dir, "rust-toolchain.toml"); t.Has(name) {
			d, _ := survey.Document(t, name)
			if v := d.Get("toolchain", "channel"); v.Str() != "" {
				c.Pins = append(c.Pins, survey.ReadPin("rust", "rust-toolchain", v.Text, survey.RankFile, survey.Inside(v.At())))
			}
			return
		}
		if name := survey.Join(dir, "rust-toolchain"); t.Has(name) {
			f, err := t.Code(name)
			if err != nil {
				return
			}
			if d, err := document.TOML(name, f.Data, f.Lines()); err == nil && d.Get("toolchain") != nil {
				if v := d.Get("toolchain", "channel"); v.Str() != "" {
					c.Pins = append(c.Pins, survey.ReadPin("rust", "rust-toolchain", v.Text, survey.RankFile, survey.Inside(v.At())))
				}
				return
			}
			for _, l := range document.PlainLines(name, f.Data, f.Lines()) {
				c.Pins = append(c.Pins, survey.ReadPin("rust", "rust-toolchain", l.Text, survey.RankFile, l.At))
				return
			}
			return
		}
		if dir == "" {
			return
		}
	}
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, _ string) survey.Modules {
	m := &modules{t: t, c: c}
	if d, _ := survey.Document(t, c.Path("Cargo.toml")); d != nil {
		m.name = strings.ReplaceAll(d.Get("package", "name").Str(), "-", "_")
		if n := d.Get("lib", "name").Str(); n != "" {
			m.lib = n
		}
	}
	return m
}

type modules struct {
	t         *source.Tree
	c         *fact.Component
	name, lib string
}

// own are the paths that lead to no other crate.
var own = map[string]bool{"std": true, "core": true, "alloc": true, "crate": true, "self": true, "super": true, "proc_macro": true, "test": true}

// Resolve implements survey.Modules.
func (m *modules) Resolve(*code.File, string, string) (string, bool) { return "", false }

// Classify implements survey.Modules. The first part of a path is a crate, or
// a module or a name of the file itself.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp)}
	first, rest, deep := strings.Cut(imp.Name, "::")
	switch {
	case own[first] || first == m.name || first == m.lib:
		i.Standard = true
		if p := m.file(from, first, rest); p != "" {
			i.File, i.Standard = p, false
		}
	case m.module(from, first), !deep && first[0] >= 'A' && first[0] <= 'Z', from.Classes[first] != nil:
		i.Standard = true
		if p := m.beside(from, first); p != "" {
			i.File, i.Standard = p, false
		}
	default:
		for _, d := range m.c.Dependencies {
			if strings.ReplaceAll(d.Name, "-", "_") == first {
				i.Package = d.Name
				if d.Optional {
					i.Optional = true
				}
				return []fact.Import{i}
			}
		}
		if first[0] < 'a' || first[0] > 'z' || !deep && rest == "" && len(imp.Kids) == 0 && strings.Contains(string(from.Src), "mod "+first) {
			i.Standard = true
			break
		}
		i.Package = strings.ReplaceAll(first, "_", "-")
	}
	return []fact.Import{i}
}

// module reports whether a file declares a module of that name.
func (m *modules) module(from *code.File, name string) bool {
	src := string(from.Src)
	return strings.Contains(src, "mod "+name+";") || strings.Contains(src, "mod "+name+" {") || strings.Contains(src, "mod "+name+"{") || strings.Contains(src, "as "+name) || m.beside(from, name) != ""
}

// beside finds the file of a module next to the one that names it.
func (m *modules) beside(from *code.File, name string) string {
	dir := source.Dir(from.Name)
	base := strings.TrimSuffix(path.Base(from.Name), ".rs")
	if base != "main" && base != "lib" && base != "mod" {
		dir = survey.Join(dir, base)
	}
	for _, end := range []string{".rs", "/mod.rs"} {
		if p := survey.Join(dir, name) + end; m.t.Has(p) {
			return p
		}
	}
	return ""
}

// file follows crate::a::b to a file.
func (m *modules) file(_ *code.File, first, rest string) string {
	if first != "crate" && first != m.name && first != m.lib {
		return ""
	}
	dir := m.c.Path("src")
	parts := strings.Split(rest, "::")
	for n := len(parts); n > 0; n-- {
		p := survey.Join(dir, strings.Join(parts[:n], "/"))
		for _, end := range []string{".rs", "/mod.rs"} {
			if m.t.Has(p + end) {
				return p + end
			}
		}
	}
	if lib := survey.Join(dir, "lib.rs"); first != "crate" && m.t.Has(lib) {
		return lib
	}
	return ""
}

// Sources implements survey.Compiler: all of src but the other programs.
func (r *Runtime) Sources(t *source.Tree, c *fact.Component) []string {
	var list []string
	for _, p := range survey.SourcesIn(t, c, []string{"src"}, ".rs") {
		if !strings.HasPrefix(p, c.Path("src/bin")+"/") && path.Base(p) != "tests.rs" {
			list = append(list, p)
		}
	}
	return list
}

// Entry implements survey.Runtime: hosts build the program and run it.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	if a, ok := chosen(t, c); ok {
		return "./" + strings.TrimPrefix(strings.TrimPrefix(a.Path, c.Dir), "/"), a.Detail, true
	}
	return "", "", false
}

// chosen is the program that a host would run.
func chosen(t *source.Tree, c *fact.Component) (fact.Artefact, bool) {
	if len(c.Artefacts) == 0 {
		return fact.Artefact{}, false
	}
	if d, _ := survey.Document(t, c.Path("Cargo.toml")); d != nil {
		if run := d.Get("package", "default-run").Str(); run != "" {
			for _, a := range c.Artefacts {
				if path.Base(a.Path) == run {
					return a, true
				}
			}
		}
	}
	return c.Artefacts[0], true
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	cmd, _, ok := r.Entry(t, c)
	return cmd, ok
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }

// Target implements survey.Targeter: cargo run, and the programs that a build
// makes, wherever a container puts them.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	base := path.Base(f.Path)
	if f.Known != nil && f.Known.Name == "cargo" {
		if a, ok := chosen(t, c); ok && len(f.Args) > 0 && f.Args[0].Text == "run" {
			var args []command.Word
			for i, w := range f.Args {
				if w.Text == "--bin" && i+1 < len(f.Args) {
					base = f.Args[i+1].Text
				}
				if w.Text == "--" {
					args = f.Args[i+1:]
					break
				}
			}
			for _, x := range c.Artefacts {
				if path.Base(x.Path) == base {
					a = x
				}
			}
			return &fact.Target{Named: path.Base(a.Path), At: f.At, Kind: command.FileTarget, Built: true, File: a.Path, Sourced: a.Detail, Args: args}, "", true
		}
		return nil, "", false
	}
	for _, a := range c.Artefacts {
		if path.Base(a.Path) == base {
			return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: a.Path, Sourced: a.Detail, Args: f.Args}, "", true
		}
	}
	if a, ok := chosen(t, c); ok && f.Known == nil && strings.HasPrefix(f.Path, "/") {
		return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: a.Path, Sourced: a.Detail, Args: f.Args}, "", true
	}
	return nil, "", false
}
