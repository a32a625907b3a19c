// Package python surveys Python components: requirements files, pyproject,
// Pipfile, setup files, version files, module resolution.
package python

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Python.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Python for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks: locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "python" }

// frameworks are the imports that make a program a web application, by the
// name to show and the distribution.
var frameworks = []struct{ dist, name, imports string }{
	{"django", "Django", "django"}, {"flask", "Flask", "flask"}, {"fastapi", "FastAPI", "fastapi"}, {"starlette", "Starlette", "starlette"}, {"tornado", "Tornado", "tornado"},
	{"aiohttp", "aiohttp", "aiohttp"}, {"bottle", "Bottle", "bottle"}, {"quart", "Quart", "quart"}, {"sanic", "Sanic", "sanic"}, {"falcon", "Falcon", "falcon"}, {"pyramid", "Pyramid", "pyramid"}, {"streamlit", "Streamlit", "streamlit"}, {"gradio", "Gradio", "gradio"}, {"dash", "Dash", "dash"}, {"nicegui", "NiceGUI", "nicegui"}, {"panel", "Panel", "panel"}, {"chainlit", "Chainlit", "chainlit"}, {"robyn", "Robyn", "robyn"}, {"cherrypy", "CherryPy", "cherrypy"}, {"litestar", "Litestar", "litestar"},
}

var usualFiles = []string{"app.py", "main.py", "wsgi.py", "asgi.py", "server.py", "application.py", "run.py"}

func join(dir, name string) string {
	if dir == "" {
		return name
	}
	return dir + "/" + name
}

// isRequirements tells requirements files by name; dev is true for those of
// development and tests.
func isRequirements(name string) (ok, dev bool) {
	base := path.Base(name)
	if !strings.HasSuffix(base, ".txt") {
		return false, false
	}
	inFolder := path.Base(source.Dir(name)) == "requirements"
	if !strings.HasPrefix(base, "requirements") && !inFolder {
		return false, false
	}
	for _, w := range []string{"dev", "test", "local", "lint", "docs", "doc", "ci", "debug"} {
		for _, part := range strings.FieldsFunc(strings.TrimSuffix(base, ".txt"), func(r rune) bool { return r == '-' || r == '_' || r == '.' }) {
			if part == w || part == w+"s" || part == "development" || part == "testing" {
				return true, true
			}
		}
	}
	return true, false
}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	manifest, py := false, false
	for n := range f.Names {
		if ok, _ := isRequirements(join(f.Dir, n)); ok && !strings.HasSuffix(f.Dir, "requirements") {
			manifest = true
		}
		py = py || strings.HasSuffix(n, ".py")
	}
	manifest = manifest || f.Has("Pipfile") || f.Has("setup.py") || f.Has("pyproject.toml")
	web := func() bool {
		for _, n := range usualFiles {
			if f.Has(n) && imports(t, join(f.Dir, n)) {
				return true
			}
		}
		for n := range f.Names {
			if strings.HasSuffix(n, ".py") && imports(t, join(f.Dir, n)) {
				return true
			}
		}
		return false
	}
	switch {
	case f.Has("manage.py"):
		return 2
	case f.Has("Procfile") && (py || manifest) && (survey.Hinted(t, f, "python") && (manifest || !f.Has("package.json"))):
		return 2
	case manifest:
		if web() || deepWeb(t, f) {
			return 2
		}
		if (f.Has("Dockerfile") || f.Has("Containerfile")) && (py || !f.Has("package.json")) && survey.Hinted(t, f, "python") {
			return 2
		}
		return 1
	case f.Has("Dockerfile") && py, f.Dir == "" && py:
		if web() && survey.Hinted(t, f, "python") { // else what is started is something else, which may start this
			return 2
		}
	}
	return 0
}

// imports is a cheap look whether a file imports a web framework or serves
// by the standard library.
func imports(t *source.Tree, name string) bool {
	f, err := t.Code(name)
	if err != nil {
		return false
	}
	s := string(f.Data)
	for _, fw := range frameworks {
		if strings.Contains(s, "import "+fw.imports) || strings.Contains(s, "from "+fw.imports) {
			return true
		}
	}
	return strings.Contains(s, "HTTPServer(") || strings.Contains(s, "make_server(") || strings.Contains(s, "serve_forever") || strings.Contains(s, "(environ, start_response)") || strings.Contains(s, "(scope, receive, send)")
}

// deepWeb looks for the web application in the packages next to a manifest.
func deepWeb(t *source.Tree, f survey.Folder) bool {
	n := 0
	for _, e := range t.Below(f.Dir) {
		if !strings.HasSuffix(e.Path, ".py") || !e.OnDisk {
			continue
		}
		rel := strings.TrimPrefix(e.Path, f.Dir+"/")
		if strings.Count(rel, "/") > 3 || survey.Elsewhere(source.Dir(rel)) && strings.Contains(rel, "/") || survey.IsTest(e.Path) {
			continue
		}
		if n++; n > 200 {
			return false
		}
		if imports(t, e.Path) {
			return true
		}
	}
	return false
}

// normal gives a distribution's name in the form for comparing (PEP 503).
func normal(s string) string { return lock.Normal(s) }

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	g := &gatherer{t: t, c: c, seen: map[string]bool{}}
	c.Complete = true
	// Those that run come first: a file for development often includes them.
	for _, forDev := range []bool{false, true} {
		for _, dir := range []string{c.Dir, join(c.Dir, "requirements")} {
			for _, e := range t.In(dir) {
				if ok, dev := isRequirements(e.Path); ok && e.OnDisk && dev == forDev {
					g.requirements(e.Path, dev, 0)
				}
			}
		}
	}
	g.pyproject(c.Path("pyproject.toml"))
	g.pipfile(c.Path("Pipfile"))
	g.setupCfg(c.Path("setup.cfg"))
	g.setupPy(c.Path("setup.py"))
	if len(c.Manifests) == 0 {
		// A manifest of a folder above serves the components below it.
		for d := c.Dir; d != "" && len(c.Manifests) == 0; {
			d = source.Dir(d)
			g.requirements(join(d, "requirements.txt"), false, 0)
			g.pyproject(join(d, "pyproject.toml"))
			g.pipfile(join(d, "Pipfile"))
		}
	}
	g.constrain()
	r.lock(c, t)
	g.pins()
	for _, fw := range frameworks {
		if d, ok := c.Dep(fw.dist); ok && !d.Dev {
			c.Frameworks = append(c.Frameworks, fw.name)
		}
	}
}

type gatherer struct {
	t    *source.Tree
	c    *fact.Component
	seen map[string]bool

	constraints map[string]fact.Dependency // of files that -c names
}

// constraint reads a constraints file: it installs nothing and narrows what
// is installed (pip documentation, "Constraints Files").
func (g *gatherer) constraint(name string) {
	if !g.t.Has(name) || g.constraints[name].File != "" {
		return
	}
	f, err := g.t.Document(name)
	if err != nil {
		return
	}
	if g.constraints == nil {
		g.constraints = map[string]fact.Dependency{}
	}
	for _, line := range document.PlainLines(name, f.Data, f.Lines()) {
		if strings.HasPrefix(line.Text, "-") {
			continue
		}
		pkg, rest := splitRequirement(line.Text)
		ver, _, _ := strings.Cut(rest, ";")
		ver, _, _ = strings.Cut(ver, "--hash")
		ver = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(ver), `\`))
		if set, ok := version.PEP440(ver); ok && ver != "" {
			g.constraints[normal(pkg)] = fact.Dependency{Name: normal(pkg), Spec: ver, Set: set, Known: true, Exact: strings.HasPrefix(ver, "==") && !strings.Contains(ver, "*"), File: name, At: line.At}
		}
	}
}

// constrain narrows what is declared by the constraints.
func (g *gatherer) constrain() {
	left := map[string]bool{} // requirements files with lines that are not exact
	for i := range g.c.Dependencies {
		d := &g.c.Dependencies[i]
		if k, ok := g.constraints[d.Name]; ok && !d.Exact && !strings.HasPrefix(d.Spec, "@") {
			d.Pinned, d.Exact = d.Pinned || k.Set.Bounded(), k.Exact
		}
		left[d.File] = left[d.File] || !d.Exact && !d.Optional
	}
	for _, m := range g.c.Manifests {
		if m.Manager == "pip" && m.Lock == "" && len(g.constraints) > 0 && !left[m.File] {
			m.Lock = m.File
		}
	}
}

func (g *gatherer) add(spec string, dev bool, group, file string, at place.Span) {
	name, rest := splitRequirement(spec)
	if name == "" {
		return
	}
	d := fact.Dependency{Name: normal(name), Spec: rest, Dev: dev, Group: group, File: file, At: at}
	ver := rest
	extras := ""
	if strings.HasPrefix(ver, "[") {
		if i := strings.IndexByte(ver, ']'); i > 0 {
			extras, ver = ver[:i+1], ver[i+1:]
		}
	}
	ver, d.Marker, _ = strings.Cut(ver, ";")
	ver = strings.Trim(strings.TrimSpace(ver), "()")
	d.Group = group
	d.Spec = ver
	if strings.HasPrefix(ver, "@") {
		d.Pinned = true
	} else if set, ok := version.PEP440(ver); ok && ver != "" {
		d.Set, d.Known = set, true
		d.Pinned = set.Bounded()
		d.Exact = strings.HasPrefix(ver, "==") && !strings.Contains(ver, "*")
	}
	g.c.Dependencies = append(g.c.Dependencies, d)
	for x := range strings.SplitSeq(strings.Trim(extras, "[]"), ",") {
		if x = strings.TrimSpace(x); x != "" {
			// What an extra brings is looked up under name[extra].
			g.c.Dependencies = append(g.c.Dependencies, fact.Dependency{Name: d.Name + "[" + strings.ToLower(x) + "]", Spec: ver, Dev: dev, Group: group, File: file, At: at, Pinned: true, Optional: true})
		}
	}
}

func splitRequirement(s string) (name, rest string) {
	s = strings.TrimSpace(s)
	i := 0
	for i < len(s) && (s[i] == '-' || s[i] == '_' || s[i] == '.' || s[i] >= '0' && s[i] <= '9' || s[i] >= 'a' && s[i] <= 'z' || s[i] >= 'A' && s[i] <= 'Z') {
		i++
	}
	return s[:i], strings.TrimSpace(s[i:])
}

// requirements reads a requirements file (pip documentation, "Requirements
// File Format").
func (g *gatherer) requirements(name string, dev bool, depth int) {
	if g.seen[name] || depth > 8 || !g.t.Has(name) {
		return
	}
	g.seen[name] = true
	f, err := g.t.Document(name)
	if err != nil {
		g.c.Complete = false
		return
	}
	g.c.Manifests = append(g.c.Manifests, &fact.Manifest{File: name, Manager: "pip"})
	exact := true
	for _, line := range document.PlainLines(name, f.Data, f.Lines()) {
		text := strings.TrimSuffix(line.Text, `\`)
		switch {
		case strings.HasPrefix(text, "-r") || strings.HasPrefix(text, "--requirement"):
			rest := strings.TrimLeft(strings.TrimPrefix(strings.TrimPrefix(text, "--requirement"), "-r"), " =\t")
			if p, ok := source.Join(source.Dir(name), rest); ok && g.t.Has(p) {
				g.requirements(p, dev, depth+1)
			} else {
				g.c.Complete = false
				g.outside(name, rest, line.At)
			}
		case strings.HasPrefix(text, "-c") || strings.HasPrefix(text, "--constraint"):
			rest := strings.TrimLeft(strings.TrimPrefix(strings.TrimPrefix(text, "--constraint"), "-c"), " =\t")
			if p, ok := source.Join(source.Dir(name), rest); ok {
				g.constraint(p)
			}
		case strings.HasPrefix(text, "-e") || strings.HasPrefix(text, "--editable"):
			g.outside(name, strings.TrimSpace(strings.TrimPrefix(strings.TrimPrefix(text, "--editable"), "-e")), line.At)
			if i := strings.Index(text, "egg="); i >= 0 {
				g.add(text[i+4:]+" @ "+"source", dev, "", name, line.At)
			} else if !strings.HasSuffix(strings.TrimSpace(text), " .") {
				g.c.Complete = false
			}
		case strings.HasPrefix(text, "--hash"):
			if n := len(g.c.Dependencies); n > 0 && g.c.Dependencies[n-1].File == name {
				g.c.Dependencies[n-1].Hashed = true
			}
		case strings.HasPrefix(text, "-"):
		case strings.HasPrefix(text, "../"), strings.HasPrefix(text, "/"):
			g.outside(name, text, line.At)
			g.c.Complete = false
		case strings.Contains(text, "://") && !strings.Contains(text, " @ "), strings.HasPrefix(text, "."), strings.HasPrefix(text, "/"):
			if i := strings.Index(text, "egg="); i >= 0 {
				g.add(text[i+4:]+" @ source", dev, "", name, line.At)
			} else {
				g.c.Complete = false
			}
		default:
			before := len(g.c.Dependencies)
			text, _, hashed := strings.Cut(text, "--hash")
			g.add(text, dev, "", name, line.At)
			for i := range g.c.Dependencies[before:] {
				d := &g.c.Dependencies[before+i]
				d.Hashed = hashed
				exact = exact && (d.Exact || d.Optional)
			}
		}
	}
	if exact && !dev {
		g.c.Manifests[len(g.c.Manifests)-1].Lock = name
	}
}

// outside notes a path of a manifest that leaves the tree.
func (g *gatherer) outside(file, p string, at place.Span) {
	p, _, _ = strings.Cut(p, "[")
	p = strings.TrimPrefix(p, "file:")
	if !strings.HasPrefix(p, "..") && !strings.HasPrefix(p, "/") {
		return
	}
	if _, in := source.Join(source.Dir(file), p); !in {
		g.c.Outside = append(g.c.Outside, fact.Path{Text: p, At: at})
	}
}

func (g *gatherer) pyproject(name string) {
	if g.seen[name] || !g.t.Has(name) {
		return
	}
	g.seen[name] = true
	f, err := g.t.Document(name)
	if err != nil {
		return
	}
	d, err := document.TOML(name, f.Data, f.Lines())
	if err != nil {
		g.c.Complete, g.c.Broken = false, true
		return
	}
	project, poetry := d.Get("project"), d.Get("tool", "poetry")
	if project == nil && poetry == nil {
		return // configuration of tools only
	}
	m := &fact.Manifest{File: name, Manager: "pyproject"}
	if poetry != nil {
		m.Manager = "poetry"
	}
	g.c.Manifests = append(g.c.Manifests, m)
	for _, x := range project.Get("dynamic").Items() {
		if x.Str() == "dependencies" && len(g.c.Dependencies) == 0 {
			g.c.Complete = false
		}
	}
	for _, x := range project.Get("dependencies").Items() {
		g.add(x.Str(), false, "", name, inside(x.At()))
	}
	for _, group := range project.Get("optional-dependencies").Items() {
		for _, x := range group.Items() {
			g.add(x.Str(), true, group.Key, name, inside(x.At()))
		}
	}
	for _, group := range d.Get("dependency-groups").Items() {
		for _, x := range group.Items() {
			g.add(x.Str(), true, group.Key, name, inside(x.At()))
		}
	}
	for _, group := range d.Get("tool", "pdm", "dev-dependencies").Items() {
		for _, x := range group.Items() {
			g.add(x.Str(), true, group.Key, name, inside(x.At()))
		}
	}
	for _, x := range d.Get("tool", "uv", "dev-dependencies").Items() {
		g.add(x.Str(), true, "dev", name, inside(x.At()))
	}
	table := func(n *document.Node, dev bool, group string) {
		for _, x := range n.Items() {
			if x.Key == "python" {
				continue
			}
			spec := x.Str()
			if x.Kind == document.Map {
				spec = x.Get("version").Str()
				if spec == "" {
					spec = "@ source"
				}
				if p := x.Get("path"); p.Str() != "" {
					g.outside(name, p.Text, inside(p.At()))
				}
				for _, e := range x.Get("extras").Items() {
					g.c.Dependencies = append(g.c.Dependencies, fact.Dependency{Name: normal(x.Key) + "[" + strings.ToLower(e.Str()) + "]", Dev: dev, Pinned: true, Optional: true, File: name, At: x.KeyAt()})
				}
			}
			g.add(x.Key+" "+spec, dev, group, name, x.KeyAt())
			if n := len(g.c.Dependencies); spec == "*" && n > 0 {
				g.c.Dependencies[n-1].Pinned = false
			}
		}
	}
	table(poetry.Get("dependencies"), false, "")
	table(poetry.Get("dev-dependencies"), true, "dev")
	for _, group := range poetry.Get("group").Items() {
		optional := group.Get("optional")
		dev := group.Key == "dev" || group.Key == "test" || group.Key == "docs" || group.Key == "lint" || optional != nil && optional.Text == "true"
		table(group.Get("dependencies"), dev, group.Key)
	}
}

func inside(s place.Span) place.Span {
	s.Col++
	s.EndCol--
	return s
}

func (g *gatherer) pipfile(name string) {
	if g.seen[name] || !g.t.Has(name) {
		return
	}
	g.seen[name] = true
	f, err := g.t.Document(name)
	if err != nil {
		return
	}
	d, err := document.TOML(name, f.Data, f.Lines())
	if err != nil {
		g.c.Complete, g.c.Broken = false, true
		return
	}
	g.c.Manifests = append(g.c.Manifests, &fact.Manifest{File: name, Manager: "pipenv"})
	for _, table := range []string{"packages", "dev-packages"} {
		for _, x := range d.Get(table).Items() {
			spec := x.Str()
			if x.Kind == document.Map {
				if spec = x.Get("version").Str(); spec == "" {
					spec = "@ source"
				}
			}
			g.add(x.Key+" "+spec, table == "dev-packages", table, name, x.KeyAt())
		}
	}
}

func (g *gatherer) setupCfg(name string) {
	if !g.t.Has(name) {
		return
	}
	f, err := g.t.Document(name)
	if err != nil {
		return
	}
	d := document.INI(name, f.Data, f.Lines())
	if d.Get("metadata") == nil && d.Get("options") == nil {
		return
	}
	if req := d.Get("options", "install_requires"); req != nil {
		g.c.Manifests = append(g.c.Manifests, &fact.Manifest{File: name, Manager: "setuptools"})
		at := req.At()
		for i, line := range strings.Split(req.Text, "\n") {
			if strings.TrimSpace(line) != "" {
				one := place.Span{File: name, Line: at.Line + i, Col: 1, EndLine: at.Line + i, EndCol: len(line) + 1}
				g.add(line, false, "", name, one)
			}
		}
	}
}

// setupPy reads the literal lists of a setup() call; anything made by code is
// left open.
func (g *gatherer) setupPy(name string) {
	if !g.t.Has(name) {
		return
	}
	src, err := g.t.Code(name)
	if err != nil {
		return
	}
	f := code.Read(name, src.Data, src.Lines())
	for _, site := range f.Calls {
		callee := site.Node.Kid(0)
		if !callee.Is(code.Name) && !callee.Is(code.Member) || callee.Name != "setup" {
			continue
		}
		for _, a := range site.Node.Args() {
			if !a.Is(code.Keyword) || a.Name != "install_requires" {
				continue
			}
			g.c.Manifests = append(g.c.Manifests, &fact.Manifest{File: name, Manager: "setuptools"})
			if !a.Kid(0).Is(code.Array) {
				g.c.Complete = false
				continue
			}
			for _, x := range a.Kid(0).Kids {
				if x.Is(code.String) {
					g.add(x.Name, false, "", name, inside(f.At(x)))
				} else {
					g.c.Complete = false
				}
			}
		}
	}
}

// lock finds the locks of the nearest folder that has some.
func (r *Runtime) lock(c *fact.Component, t *source.Tree) {
	for dir := c.Dir; ; dir = source.Dir(dir) {
		if found := r.locks.Find(dir, "poetry", "uv", "pdm", "pipenv", "pip"); len(found) > 0 {
			for _, f := range found {
				c.Locks = append(c.Locks, r.locks.Read(f))
			}
			c.LockDir = dir
			break
		}
		if dir == "" {
			return
		}
	}
	c.Manager, c.ManagerAt = r.manager(c, t)
	for i, l := range c.Locks {
		if l.Manager == c.Manager {
			c.Locks[0], c.Locks[i] = c.Locks[i], c.Locks[0]
			break
		}
	}
	first := c.Locks[0]
	c.HasLock = true
	for _, m := range c.Manifests {
		if m.Manager == first.Manager || m.Manager == "pyproject" || m.Manager == "poetry" && first.Manager == "uv" {
			m.Manager, m.Lock = first.Manager, first.File
		}
	}
	c.Locked = map[string]bool{}
	for _, p := range first.Packages {
		if !p.Dev {
			c.Locked[p.Name] = true
		}
	}
}

// manager tells the package manager that the tree says it uses: by its table
// in pyproject.toml, its own manifest, or a container file.
func (r *Runtime) manager(c *fact.Component, t *source.Tree) (string, place.Span) {
	for _, d := range c.Descriptors {
		if d.Image == nil {
			continue
		}
		for _, run := range d.Image.Runs {
			for _, m := range []struct{ words, name string }{{"uv sync", "uv"}, {"poetry install", "poetry"}, {"pdm install", "pdm"}, {"pdm sync", "pdm"}, {"pipenv install", "pipenv"}, {"pipenv sync", "pipenv"}} {
				if strings.Contains(run.Text, m.words) {
					return m.name, run.At
				}
			}
		}
	}
	name := c.Path("pyproject.toml")
	if t.Has(name) {
		if f, err := t.Document(name); err == nil {
			if d, err := document.TOML(name, f.Data, f.Lines()); err == nil {
				for _, tool := range []string{"uv", "pdm", "poetry"} {
					if n := d.Get("tool", tool); n != nil {
						return tool, n.KeyAt()
					}
				}
				if b := d.Get("build-system", "build-backend"); strings.HasPrefix(b.Str(), "poetry") {
					return "poetry", inside(b.At())
				} else if strings.HasPrefix(b.Str(), "pdm") {
					return "pdm", inside(b.At())
				} else if strings.HasPrefix(b.Str(), "uv_build") {
					return "uv", inside(b.At())
				}
			}
		}
	}
	if p := c.Path("Pipfile"); t.Has(p) && !t.Has(name) {
		return "pipenv", place.Span{File: p, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
	}
	return "", place.Span{}
}

// pins reads every statement of a Python version.
func (g *gatherer) pins() {
	c := g.c
	add := func(from string, v *document.Node) {
		c.Pins = append(c.Pins, survey.ReadPin("python", from, v.Text, survey.RankManifest, inside(v.At())))
	}
	for d := c.Dir; ; d = source.Dir(d) {
		if name := join(d, "pyproject.toml"); g.t.Has(name) {
			if f, err := g.t.Document(name); err == nil {
				if n, err := document.TOML(name, f.Data, f.Lines()); err == nil {
					if v := n.Get("project", "requires-python"); v != nil {
						add("requires-python", v)
					}
					if v := n.Get("tool", "poetry", "dependencies", "python"); v.Str() != "" {
						add("poetry python", v)
					}
				}
			}
			break
		}
		if d == "" {
			break
		}
	}
	if name := c.Path("Pipfile"); g.t.Has(name) {
		if f, err := g.t.Document(name); err == nil {
			if n, err := document.TOML(name, f.Data, f.Lines()); err == nil {
				for _, k := range []string{"python_version", "python_full_version"} {
					if v := n.Get("requires", k); v.Str() != "" {
						add("Pipfile", v)
					}
				}
			}
		}
	}
	c.Pins = append(c.Pins, survey.FilePins(g.t, c.Dir, "python")...)
}

// Entry implements survey.Runtime. Python has no command that every host runs
// by itself.
func (*Runtime) Entry(*source.Tree, *fact.Component) (string, string, bool) { return "", "", false }

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string {
	for _, fw := range frameworks {
		if fw.imports == pkg {
			return fw.name
		}
	}
	return ""
}

// Assumed implements survey.Runtime: a Django site's WSGI module, else a file
// of a usual name.
func (*Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	if t.Has(c.Path("manage.py")) {
		for _, e := range t.Below(c.Dir) {
			rel := strings.TrimPrefix(e.Path, c.Dir+"/")
			if path.Base(rel) == "wsgi.py" && strings.Count(rel, "/") == 1 && !survey.Elsewhere(source.Dir(rel)) {
				return "gunicorn " + source.Dir(rel) + ".wsgi", true
			}
		}
		return "python manage.py check", true
	}
	for _, n := range append(usualFiles, "src/app.py", "src/main.py", "app/main.py", "app/app.py", "app/__main__.py") {
		if t.Has(c.Path(n)) {
			return "python " + n, true
		}
	}
	for _, e := range t.In(c.Dir) {
		if strings.HasSuffix(e.Path, ".py") && imports(t, e.Path) {
			return "python " + path.Base(e.Path), true
		}
	}
	return "", false
}
