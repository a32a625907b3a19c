package python

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/survey"
)

type modules struct {
	t     *source.Tree
	c     *fact.Component
	roots []string // the folders that imports start from, in order
	dirs  []string // folders in which modules are looked for besides
}

// Modules implements survey.Runtime (Python language reference, "The import
// system"): the folder the program runs in, the component's folder, and src where
// something puts it there.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, dir string) survey.Modules {
	m := &modules{t: t, c: c}
	roots := []string{dir, c.Dir}
	if src := join(c.Dir, "src"); t.HasDir(src) && reachesSource(t, c.Dir) {
		roots = append(roots, src)
	}
	for _, d := range roots {
		seen := false
		for _, x := range m.roots {
			seen = seen || x == d
		}
		if !seen && t.HasDir(d) {
			m.roots = append(m.roots, d)
		}
	}
	return m
}

// reachesSource reports whether imports find what stands in src: a project that is
// installed brings it, or a file says PYTHONPATH.
func reachesSource(t *source.Tree, dir string) bool {
	for _, name := range []string{"pyproject.toml", "setup.py", "setup.cfg"} {
		if t.Has(join(dir, name)) {
			return true
		}
	}
	read := 0
	for _, e := range t.Below("") {
		base := path.Base(e.Path)
		inDir := source.Dir(e.Path) == dir
		switch ext := path.Ext(base); {
		case strings.HasPrefix(base, "requirements") && ext == ".txt" && inDir:
		case ext == ".env", ext == ".yaml", ext == ".yml", ext == ".sh", ext == ".service", ext == ".conf", ext == ".ini", ext == ".toml", ext == ".json" && inDir:
		case ext == "" && !strings.HasPrefix(base, "."), strings.HasPrefix(base, ".env"), strings.HasPrefix(base, "Dockerfile"), strings.HasPrefix(base, "Containerfile"):
		default:
			continue
		}
		if read++; read > 300 {
			return true
		}
		f, err := t.Document(e.Path)
		if err != nil {
			continue
		}
		text := string(f.Data)
		if strings.Contains(text, "PYTHONPATH") || strings.Contains(text, "pythonpath") || strings.HasPrefix(base, "requirements") && (strings.Contains(text, "-e .") || strings.Contains(text, "\n.\n") || strings.Contains(text, "./src") || strings.Contains(text, "--editable")) {
			return true
		}
	}
	return false
}

// Search implements survey.Searching.
func (m *modules) Search(dirs []string) { m.dirs = dirs }

// file finds the file of a module below a folder; folder is true for a
// package without __init__ (PEP 420).
func (m *modules) file(dir, module string) (name string, folder, ok bool) {
	p := join(dir, strings.ReplaceAll(module, ".", "/"))
	if module == "" {
		p = dir
	}
	switch {
	case m.t.Has(p + "/__init__.py"):
		return p + "/__init__.py", false, true
	case m.t.Has(p + ".py"):
		return p + ".py", false, true
	case m.t.HasDir(p) && p != "":
		return p, true, true
	}
	return "", false, false
}

func (m *modules) find(from *code.File, module string) (name string, folder, ok bool) {
	if rest := strings.TrimLeft(module, "."); rest != module {
		dir := source.Dir(from.Name)
		for range len(module) - len(rest) - 1 {
			dir = source.Dir(dir)
		}
		return m.file(dir, rest)
	}
	for _, r := range m.roots {
		if name, folder, ok := m.file(r, module); ok && !(folder && !m.holdsCode(name)) {
			return name, folder, true
		}
	}
	for _, r := range m.dirs {
		if name, folder, ok := m.file(r, module); ok && !(folder && !m.holdsCode(name)) {
			return name, folder, true
		}
	}
	// The folder of the file itself, for scripts that are run from there.
	return m.sibling(from, module)
}

func (m *modules) sibling(from *code.File, module string) (string, bool, bool) {
	for d := source.Dir(from.Name); d != "" && d != m.c.Dir; d = source.Dir(d) {
		if m.t.Has(d + "/__init__.py") {
			continue
		}
		if name, folder, ok := m.file(d, module); ok && !folder {
			return name, folder, true
		}
	}
	return "", false, false
}

// holdsCode tells folders with Python files from other folders of that name.
func (m *modules) holdsCode(dir string) bool {
	for _, e := range m.t.Below(dir) {
		if strings.HasSuffix(e.Path, ".py") {
			return true
		}
	}
	return false
}

// Resolve implements survey.Modules.
func (m *modules) Resolve(from *code.File, module, name string) (string, bool) {
	f, folder, ok := m.find(from, module)
	if !ok {
		return "", false
	}
	if folder {
		if name != "" {
			if sub, fold, ok := m.file(f, name); ok && !fold {
				return sub, true
			}
		}
		return f, true
	}
	return f, true
}

// Classify implements survey.Modules.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	base := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp)}
	if strings.HasPrefix(imp.Name, ".") {
		base.Relative = true
		f, _, ok := m.find(from, imp.Name)
		if !ok {
			base.Missing = true
			base.Case = m.fold(from, imp.Name)
			return []fact.Import{base}
		}
		return m.members(base, from, imp, f)
	}
	top, _, _ := strings.Cut(imp.Name, ".")
	if f, _, ok := m.find(from, imp.Name); ok {
		return m.members(base, from, imp, f)
	}
	if _, _, ok := m.find(from, top); ok {
		base.File = ""
		base.Standard = true
		return []fact.Import{base}
	}
	if strings.Contains(standard, " "+top+" ") || strings.HasPrefix(top, "_") {
		base.Standard = true
		return []fact.Import{base}
	}
	if _, declared := Declared(m.c, top, imp.Name); !declared && distributions[top] == "" {
		if base.Case = m.fold(from, imp.Name); base.Case != "" {
			base.Missing = true
			return []fact.Import{base}
		}
	}
	base.Package = top
	return []fact.Import{base}
}

// fold finds the module of the tree whose letters have another case. Python
// itself tells letter case apart everywhere (PEP 235).
func (m *modules) fold(from *code.File, module string) string {
	rel := strings.TrimLeft(module, ".")
	dirs := append([]string(nil), m.roots...)
	if rel != module {
		d := source.Dir(from.Name)
		for range len(module) - len(rel) - 1 {
			d = source.Dir(d)
		}
		dirs = []string{d}
	}
	for _, d := range dirs {
		p := join(d, strings.ReplaceAll(rel, ".", "/"))
		for _, end := range []string{".py", "/__init__.py"} {
			if e, ok := m.t.Fold(p + end); ok && rel != "" {
				return e.Path
			}
		}
	}
	return ""
}

// members adds the submodules that a from-import names.
func (m *modules) members(base fact.Import, from *code.File, imp *code.Node, f string) []fact.Import {
	var list []fact.Import
	if strings.HasSuffix(f, ".py") {
		base.File = f
		list = append(list, base)
	} else {
		base.Standard = true
	}
	for _, k := range imp.Kids {
		if k.Name == "*" {
			continue
		}
		sep := "."
		if strings.HasSuffix(imp.Name, ".") {
			sep = ""
		}
		if sub, fold, ok := m.find(from, imp.Name+sep+k.Name); ok && !fold && sub != f {
			x := base
			x.Module, x.File, x.Standard = imp.Name+sep+k.Name, sub, false
			list = append(list, x)
		}
	}
	return list
}

// Declared says whether an import is given by what the component declares:
// by name, by the table of names that differ, by what a declared distribution
// always brings, or, in a package that several distributions share, by a
// distribution whose name begins with the module's dotted path (PEP 420).
func Declared(c *fact.Component, top, module string) (dep fact.Dependency, ok bool) {
	shared := ""
	if strings.Contains(module, ".") {
		shared = normal(module)
	}
	var dev *fact.Dependency
	for i, d := range c.Dependencies {
		if !gives(d.Name, top) && !(shared != "" && (d.Name == shared || strings.HasPrefix(d.Name, shared+"-") || strings.HasPrefix(shared, d.Name+"-") && strings.Contains(d.Name, "-"))) {
			continue
		}
		if !d.Dev {
			return d, true
		}
		if dev == nil {
			dev = &c.Dependencies[i]
		}
	}
	for _, dist := range candidates(top) {
		if c.Locked[dist] && dev == nil {
			return fact.Dependency{Name: dist}, true
		}
	}
	if dev != nil {
		return *dev, true
	}
	return fact.Dependency{}, false
}

func candidates(top string) []string {
	return append(strings.Fields(distributions[top]), normal(top))
}

// gives says whether a distribution provides an import.
func gives(dist, top string) bool {
	for _, d := range candidates(top) {
		if d == dist {
			return true
		}
	}
	if b, ok := brings[dist]; ok && strings.Contains(" "+b+" ", " "+top+" ") {
		return true
	}
	if i := strings.IndexByte(dist, '['); i > 0 {
		return false
	}
	return related(dist, normal(top))
}

// related lets names pass that are near enough for the import to come from
// the distribution: python-foo, foo-python, django-foo, foo-client.
func related(dist, top string) bool {
	if len(top) < 3 {
		return false
	}
	a, b := strings.ReplaceAll(dist, "-", ""), strings.ReplaceAll(top, "-", "")
	if a == b || a == "python"+b || a == "py"+b || a == b+"python" || a == b+"py" || a == "django"+b || a == "flask"+b || b == "py"+a {
		return true
	}
	for _, p := range strings.Split(dist, "-") {
		if p == top {
			// flask-cors does not give flask itself, but who knows it gives cors.
			return !strings.HasPrefix(dist, top+"-")
		}
	}
	return strings.HasPrefix(a, b) && len(a)-len(b) <= 2
}

// Distribution names what to declare for an import.
func Distribution(top string) string {
	if c := strings.Fields(distributions[top]); len(c) > 0 {
		return c[0]
	}
	return normal(top)
}
