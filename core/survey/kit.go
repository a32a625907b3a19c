package survey

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
	"ubique/core/version"
)

// What the surveys of the runtimes share.

// Targeter is a runtime that knows what its own programs load.
type Targeter interface {
	// Target says which file a command starts with; ok is false where the
	// runtime does not know the program.
	Target(t *source.Tree, c *fact.Component, f command.Final) (target *fact.Target, reason string, ok bool)
}

// Builder is a runtime whose start is made by a build: the files that a start
// names need not be there.
type Builder interface {
	// Builds says whether a build of the component makes a path.
	Builds(c *fact.Component, p string) bool
}

// Compiler is a runtime whose build takes all sources of the component, reached
// by an import or not.
type Compiler interface {
	// Sources lists the source files that the build takes.
	Sources(t *source.Tree, c *fact.Component) []string
}

// Listening is a runtime that knows where its programs listen from their
// settings.
type Listening interface {
	Listeners(t *source.Tree, c *fact.Component, st *fact.Start) []*fact.Listener
}

// SourcesIn lists the files of some folders of a component that end in one of
// some ways, apart from tests.
func SourcesIn(t *source.Tree, c *fact.Component, dirs []string, ends ...string) []string {
	var list []string
	for _, d := range dirs {
		for _, e := range t.Below(strings.TrimSuffix(c.Path(d), "/")) {
			if !e.OnDisk || len(list) >= maxReached {
				continue
			}
			for _, end := range ends {
				if strings.HasSuffix(e.Path, end) && !IsTest(e.Path) {
					list = append(list, e.Path)
				}
			}
		}
	}
	return list
}

// Join joins a folder of the tree and a name.
func Join(dir, name string) string { return join(dir, name) }

// Inside takes the quotes off the place of a string.
func Inside(s place.Span) place.Span { return inside(s) }

// Line1 is the first line of a file.
func Line1(file string) place.Span {
	return place.Span{File: file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
}

// Document reads a document of a kind told by its extension; nil where it is
// not there, broken true where it cannot be read.
func Document(t *source.Tree, name string) (d *document.Node, broken bool) {
	if !t.Has(name) {
		return nil, false
	}
	f, err := t.Document(name)
	if err != nil {
		return nil, true
	}
	switch path.Ext(name) {
	case ".json", ".jsonc":
		d, err = document.JSON(name, f.Data, f.Lines(), path.Base(name) != "package.json" && path.Base(name) != "composer.json")
	case ".yaml", ".yml":
		var docs []*document.Node
		if docs, err = document.YAML(name, f.Data, f.Lines()); err == nil && len(docs) > 0 {
			d = docs[0]
		}
	case ".toml":
		d, err = document.TOML(name, f.Data, f.Lines())
	case ".conf":
		d = document.HOCON(name, f.Data, f.Lines())
	case ".properties":
		d = document.INI(name, f.Data, f.Lines())
	default:
		d, err = document.XML(name, f.Data, f.Lines())
	}
	return d, err != nil
}

// Documents gives the documents of a YAML file of several, in their order; of
// any other data file the one.
func Documents(t *source.Tree, name string) []*document.Node {
	if ext := path.Ext(name); ext != ".yaml" && ext != ".yml" || !t.Has(name) {
		if d, _ := Document(t, name); d != nil {
			return []*document.Node{d}
		}
		return nil
	}
	f, err := t.Document(name)
	if err != nil {
		return nil
	}
	docs, err := document.YAML(name, f.Data, f.Lines())
	if err != nil {
		return nil
	}
	return docs
}

// Code reads a source file of the tree; nil where it is not there.
func Code(t *source.Tree, name string, lang code.Language) *code.File {
	if !t.Has(name) {
		return nil
	}
	f, err := t.Code(name)
	if err != nil {
		return nil
	}
	return code.ReadAs(lang, name, f.Data, f.Lines())
}

// Literal is the text of an argument that is a string; ok is false for any
// other.
func Literal(n *code.Node) (string, bool) {
	if n.Is(code.String) {
		return n.Name, true
	}
	return "", false
}

// Callee is the name of what a call calls, without what stands before it.
func Callee(n *code.Node) string {
	f := n.Kid(0)
	if f.Is(code.Name) || f.Is(code.Member) {
		return f.Name
	}
	return ""
}

// Named gives the value of an argument that is passed by its name.
func Named(call *code.Node, name string) *code.Node {
	for _, a := range call.Args() {
		if a.Is(code.Keyword) && a.Name == name {
			return a.Kid(0)
		}
	}
	return nil
}

// Quoted is the place of the text inside the quotes of a literal.
func Quoted(f *code.File, n *code.Node) place.Span {
	at := f.At(n)
	if n.Is(code.String) && int(n.End-n.Off) >= len(n.Name)+2 {
		return inside(at)
	}
	return at
}

// TakeLocks finds the locks of some managers in the nearest folder that has
// any.
func TakeLocks(t *source.Tree, c *fact.Component, r *lock.Reader, above bool, managers ...string) {
	for dir := c.Dir; ; dir = source.Dir(dir) {
		if found := r.Find(dir, managers...); len(found) > 0 {
			for _, f := range found {
				c.Locks = append(c.Locks, r.Read(f))
			}
			c.LockDir, c.HasLock = dir, true
			for _, m := range c.Manifests {
				m.Lock, m.LockDir = found[0], dir
			}
			return
		}
		if dir == "" || !above {
			return
		}
	}
}

// Declare makes a dependency with its range read by a grammar.
func Declare(name, spec string, read func(string) (version.Set, bool), file string, at place.Span) fact.Dependency {
	d := fact.Dependency{Name: name, Spec: spec, File: file, At: at}
	d.Set, d.Known = version.All, spec == ""
	if spec != "" {
		d.Set, d.Known = read(spec)
	}
	d.Pinned = !d.Known || d.Set.Bounded()
	if spec == "" || spec == "*" {
		d.Pinned = false
	}
	d.Exact = d.Known && d.Set.Single()
	return d
}

// Plain are modules of a language whose imports are not followed to files.
type Plain struct{}

// Resolve implements Modules.
func (Plain) Resolve(*code.File, string, string) (string, bool) { return "", false }

// Classify implements Modules.
func (Plain) Classify(*code.File, *code.Node) []fact.Import { return nil }

// Mentions reports whether a file of the tree holds one of some texts: a cheap
// look before a component is made.
func Mentions(t *source.Tree, name string, texts ...string) bool {
	if !t.Has(name) {
		return false
	}
	f, err := t.Code(name)
	if err != nil {
		return false
	}
	for _, s := range texts {
		if strings.Contains(string(f.Data), s) {
			return true
		}
	}
	return false
}

// FrameworksOf names the frameworks among the dependencies, by a table of
// pairs of package and name.
func FrameworksOf(c *fact.Component, table [][2]string) {
	for _, fw := range table {
		if d, ok := c.Dep(fw[0]); ok && !d.Dev && !contains(c.Frameworks, fw[1]) {
			c.Frameworks = append(c.Frameworks, fw[1])
		}
	}
}

// Of gives what a table of pairs says of a name.
func Of(table [][2]string, name string) string {
	for _, p := range table {
		if p[0] == name {
			return p[1]
		}
	}
	return ""
}
