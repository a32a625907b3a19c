// Package node surveys Node.js components: package.json, version files,
// module resolution.
package node

import (
	"path"
	"strings"
	"sync"

	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Node.js. It keeps what it reads of manifests.
type Runtime struct {
	mu        sync.Mutex
	manifests map[string]*document.Node
	packs     map[string]string // packages of the tree by name: their folder
	locks     *lock.Reader
}

// New makes the survey of Node.js for one tree.
func New(locks *lock.Reader) *Runtime {
	return &Runtime{manifests: map[string]*document.Node{}, locks: locks}
}

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "node" }

// manifest reads a package.json once.
func (r *Runtime) manifest(t *source.Tree, name string) *document.Node {
	r.mu.Lock()
	d, ok := r.manifests[name]
	r.mu.Unlock()
	if ok {
		return d
	}
	if t.Has(name) {
		if f, err := t.Document(name); err == nil {
			d, _ = document.JSON(name, f.Data, f.Lines(), false)
		}
	}
	r.mu.Lock()
	r.manifests[name] = d
	r.mu.Unlock()
	return d
}

// frameworks are the packages that make a component a server, by the name to
// show. Source: the packages' own documentation.
var frameworks = []struct{ pkg, name string }{
	{"express", "Express"}, {"fastify", "Fastify"}, {"koa", "Koa"}, {"hono", "Hono"}, {"@hono/node-server", "Hono"}, {"@nestjs/core", "Nest"}, {"@hapi/hapi", "hapi"},
	{"next", "Next.js"}, {"nuxt", "Nuxt"}, {"elysia", "Elysia"}, {"@remix-run/express", "Remix"}, {"@adonisjs/core", "AdonisJS"}, {"@feathersjs/feathers", "Feathers"}, {"loopback", "LoopBack"}, {"@loopback/core", "LoopBack"}, {"h3", "h3"}, {"restify", "restify"}, {"polka", "Polka"}, {"socket.io", "Socket.IO"}, {"ws", "ws"}, {"apollo-server", "Apollo Server"}, {"@apollo/server", "Apollo Server"},
}

// browserOnly are packages of applications that run in the browser.
var browserOnly = []string{"vite", "astro", "gatsby", "@11ty/eleventy", "@docusaurus/core", "@sveltejs/kit", "@react-router/dev", "nuxt", "webpack", "react-scripts", "@angular/core", "@vue/cli-service", "parcel", "svelte", "react-dom", "vue"}

// bundlers make one artefact of the code and its packages.
var bundlers = []string{"esbuild", "webpack", "rollup", "ncc", "tsup", "parcel", "rolldown", "tsdown", "vite"}

var usualFiles = []string{"server.js", "app.js", "index.js", "main.js", "server.mjs", "index.mjs", "app.mjs", "server.ts", "index.ts", "app.ts"}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	if !f.Has("package.json") {
		if described(f) && !survey.Hinted(t, f, "node") {
			return 0 // the descriptors start something else, which may start this
		}
		if f.Dir == "" || f.Has("Procfile") || f.Has("Dockerfile") {
			for _, n := range usualFiles {
				if f.Has(n) && serves(t, join(f.Dir, n)) {
					return 2
				}
			}
		}
		return 0
	}
	m := r.manifest(t, join(f.Dir, "package.json"))
	if m == nil {
		return 2 // broken: the component is there and its manifest unreadable
	}
	has := func(table, name string) bool { return m.Get(table, name) != nil }
	server := false
	for _, fw := range frameworks {
		server = server || has("dependencies", fw.pkg)
	}
	if m.Get("scripts", "start") == nil && !server && otherManifest(f) && !anyOf(f, usualFiles) {
		return 1 // it builds the pages of the application that another manifest declares
	}
	switch {
	case !described(f) || survey.Hinted(t, f, "node"):
	default:
		return 1 // the descriptors start something else: this is for its front end
	}
	switch {
	case m.Get("scripts", "start") != nil, described(f):
		if m.Get("workspaces") != nil && m.Get("scripts", "start") == nil && !f.Has("Procfile") && !anyOf(f, usualFiles) {
			return 1
		}
		return 2
	case server && m.Get("workspaces") == nil:
		if !r.listens(t, f, m) {
			return 1 // a library that uses a framework
		}
		if m.Get("exports") != nil || m.Get("peerDependencies") != nil || m.Get("types") != nil {
			if !anyOf(f, usualFiles) {
				return 1 // a library that uses a framework
			}
		}
		return 2
	}
	for _, b := range browserOnly {
		if (has("dependencies", b) || has("devDependencies", b)) && m.Get("scripts", "build") != nil {
			return 2
		}
	}
	for _, n := range []string{"server.js", "app.js", "index.js"} {
		if f.Has(n) && serves(t, join(f.Dir, n)) {
			return 2
		}
	}
	return 1
}

// kitPackages are frameworks that serve without a call of the application's.
var kitPackages = []string{"next", "nuxt", "@nestjs/core", "@adonisjs/core", "@remix-run/express"}

// maxLooked is how many files of a package are looked into for a server.
const maxLooked = 100

// listens takes a cheap look whether one of the files that a package would be
// started with serves.
func (r *Runtime) listens(t *source.Tree, f survey.Folder, m *document.Node) bool {
	for _, k := range kitPackages {
		if m.Get("dependencies", k) != nil {
			return true
		}
	}
	files := []string{strings.TrimPrefix(m.Get("main").Str(), "./")}
	for _, n := range usualFiles {
		files = append(files, n, "src/"+n)
	}
	if main := files[0]; (main == "" || !t.Has(join(f.Dir, main))) && m.Get("files") == nil { // nobody imports it
		n := 0
		for _, e := range t.Below(f.Dir) {
			if !strings.Contains(" .js .ts .mjs .cjs .mts ", " "+path.Ext(e.Path)+" ") || survey.IsTest(e.Path) || survey.Elsewhere(strings.TrimPrefix(e.Path, f.Dir)) {
				continue
			}
			if n++; n > maxLooked {
				break
			}
			if survey.Mentions(t, e.Path, ".listen(") {
				return true
			}
		}
	}
	for _, n := range files {
		if n != "" && survey.Mentions(t, join(f.Dir, n), "listen(", "serve(", "createServer", "start()", "ready(", "export default", "app.fetch") {
			return true
		}
	}
	// Its own programs, wherever they lie.
	for _, s := range m.Get("scripts").Items() {
		if strings.Contains(s.Str(), "node ") || strings.Contains(s.Str(), "nodemon") || strings.Contains(s.Str(), "tsx") || strings.Contains(s.Str(), "ts-node") {
			return true
		}
	}
	return false
}

// otherManifest reports whether a manifest of another runtime, with something
// that starts, stands in the folder.
func otherManifest(f survey.Folder) bool {
	for _, n := range []string{"artisan", "composer.json", "mix.exs", "config.ru", "Gemfile", "manage.py", "requirements.txt", "pyproject.toml", "Pipfile", "pom.xml", "build.gradle", "build.gradle.kts", "go.mod", "Cargo.toml"} {
		if f.Has(n) {
			return true
		}
	}
	for n := range f.Names {
		if strings.HasSuffix(n, ".csproj") {
			return true
		}
	}
	return false
}

// described reports whether the folder has a descriptor that starts something.
func described(f survey.Folder) bool {
	return f.Has("Procfile") || f.Has("Dockerfile") || f.Has("Containerfile")
}

// serves is a cheap look at a plain file without a manifest.
func serves(t *source.Tree, name string) bool {
	f, err := t.Code(name)
	return err == nil && strings.Contains(string(f.Data), "listen(")
}

func anyOf(f survey.Folder, names []string) bool {
	for _, n := range names {
		if f.Has(n) {
			return true
		}
	}
	return false
}

func join(dir, name string) string {
	if dir == "" {
		return name
	}
	return dir + "/" + name
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	m := r.manifest(t, c.Path("package.json"))
	if m != nil {
		r.gatherManifest(t, c, f, m)
	} else if f.Has("package.json") {
		c.Complete, c.Broken = false, true
	}
	r.pins(t, c, m)
	for _, fw := range frameworks {
		if d, ok := c.Dep(fw.pkg); ok && !d.Dev && !contains(c.Frameworks, fw.name) {
			c.Frameworks = append(c.Frameworks, fw.name)
		}
	}
	if m != nil {
		r.artefacts(t, c, m)
		r.engine(t, c)
	}
}

// engine notes where Bun runs the code in the place of Node.js: the tree uses
// it as its package manager and starts with it.
func (r *Runtime) engine(t *source.Tree, c *fact.Component) {
	start := c.Scripts["start"].Text
	uses := strings.HasPrefix(start, "bun ") || strings.Contains(start, " bun ") || strings.Contains(start, "bunx --bun")
	for _, d := range c.Descriptors {
		if d.Image == nil || start != "" {
			continue
		}
		for _, b := range d.Image.Bases {
			uses = uses || b.Final && survey.Product(b.Name) == "bun"
		}
	}
	for _, d := range c.Descriptors {
		for _, p := range d.Procs {
			uses = uses || p.Name == "web" && strings.HasPrefix(p.Command, "bun ")
		}
	}
	if !uses && start == "" {
		for _, n := range append([]string{"index.ts", "src/index.ts", "server.ts", "src/server.ts"}, usualFiles...) {
			uses = uses || survey.Mentions(t, c.Path(n), "Bun.serve")
		}
	}
	if uses {
		c.Variant = "bun"
		c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "bun")...)
	}
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

func (r *Runtime) gatherManifest(t *source.Tree, c *fact.Component, f survey.Folder, m *document.Node) {
	manifest := &fact.Manifest{File: c.Path("package.json"), Manager: "npm"}
	r.lock(t, c, manifest, m)
	c.Manifests = append(c.Manifests, manifest)
	for _, table := range []string{"dependencies", "devDependencies", "optionalDependencies", "peerDependencies"} {
		for _, d := range m.Get(table).Items() {
			r.dependency(c, manifest.File, table, d)
		}
	}
	// A package of the tree is linked, whatever version it is asked for in.
	for i, d := range c.Dependencies {
		if _, ok := r.Package(t, d.Name); ok {
			c.Dependencies[i].Pinned, c.Dependencies[i].Linked = true, true
		}
	}
	// What the root of a workspace declares is there for its members.
	for dir := c.Dir; dir != ""; {
		dir = source.Dir(dir)
		if root := r.manifest(t, join(dir, "package.json")); root != nil && (root.Get("workspaces") != nil || t.Has(join(dir, "pnpm-workspace.yaml"))) {
			for _, table := range []string{"dependencies", "devDependencies"} {
				for _, d := range root.Get(table).Items() {
					if _, ok := c.Dep(d.Key); !ok {
						r.dependency(c, join(dir, "package.json"), table, d)
						c.Dependencies[len(c.Dependencies)-1].Group = "workspace root"
					}
				}
			}
			break
		}
	}
	c.Scripts = map[string]command.Script{}
	vars := command.Configured(m)
	for _, s := range m.Get("scripts").Items() {
		if s.Kind == document.String {
			c.Scripts[s.Key] = command.Script{Text: s.Text, At: inside(s.At()), Vars: vars}
		}
	}
	if s, ok := c.Scripts["build"]; ok {
		for _, b := range bundlers {
			if strings.Contains(s.Text, b) {
				c.Bundled = true
			}
		}
	}
	if m.Get("workspaces") != nil || t.Has(c.Path("pnpm-workspace.yaml")) {
		r.members(t, c)
	}
}

func (r *Runtime) dependency(c *fact.Component, file, table string, d *document.Node) {
	spec := d.Str()
	dep := fact.Dependency{Name: d.Key, Spec: spec, Dev: table == "devDependencies", Optional: table == "optionalDependencies" || table == "peerDependencies", Group: table, File: file, At: d.KeyAt()}
	for _, scheme := range []string{"file:", "link:", "portal:"} {
		if to, ok := strings.CutPrefix(spec, scheme); ok {
			if _, in := source.Join(source.Dir(file), to); !in {
				c.Outside = append(c.Outside, fact.Path{Text: spec, At: inside(d.At())})
			}
		}
	}
	rng := spec
	if alias, ok := strings.CutPrefix(spec, "npm:"); ok {
		if i := strings.LastIndexByte(alias, '@'); i > 0 {
			dep.Real, rng = alias[:i], alias[i+1:]
		}
	}
	set, ok := version.NPM(rng)
	dep.Set, dep.Known = set, ok
	dep.Exact = ok && strings.Trim(spec, "0123456789.") == "" && strings.Count(spec, ".") == 2
	dep.Pinned = !ok || set.Bounded()
	switch strings.TrimSpace(spec) {
	case "*", "", "latest", "x", "next":
		dep.Pinned = false
	}
	c.Dependencies = append(c.Dependencies, dep)
}

// inside takes the quotes off the place of a string.
func inside(s place.Span) place.Span {
	s.Col++
	s.EndCol--
	return s
}

// lock finds the locks of the nearest folder that has some, and which of them
// counts: the one of the manager that packageManager, a workspace file, a
// script or a container file names, else the one that satisfies the manifest.
func (r *Runtime) lock(t *source.Tree, c *fact.Component, manifest *fact.Manifest, m *document.Node) {
	for dir := c.Dir; ; dir = source.Dir(dir) {
		if found := r.locks.Find(dir, "npm", "yarn", "pnpm", "bun"); len(found) > 0 {
			for _, f := range found {
				c.Locks = append(c.Locks, r.locks.Read(f))
			}
			c.LockDir = dir
			break
		}
		if dir == "" {
			break
		}
	}
	c.Manager, c.ManagerAt = r.manager(t, c, m)
	if l := join(c.Dir, "deno.lock"); len(c.Locks) == 0 && t.Has(l) { // Deno installs for package.json too
		c.HasLock, manifest.Lock, manifest.Manager = true, l, "deno"
		return
	}
	if len(c.Locks) == 0 {
		if c.Manager != "" {
			manifest.Manager = c.Manager
		}
		return
	}
	for i, l := range c.Locks {
		if l.Manager == c.Manager {
			c.Locks[0], c.Locks[i] = c.Locks[i], c.Locks[0]
			break
		}
	}
	first := c.Locks[0]
	c.HasLock = true
	manifest.Lock, manifest.Manager, manifest.LockDir = first.File, first.Manager, c.LockDir
	// What the lock puts at the top of node_modules is where code finds it.
	if first.Manager == "npm" {
		c.Locked = map[string]bool{}
		for _, p := range first.Packages {
			if !p.Dev {
				c.Locked[p.Name] = true
			}
		}
	}
}

// manager tells the package manager that the tree says it uses.
func (r *Runtime) manager(t *source.Tree, c *fact.Component, m *document.Node) (string, place.Span) {
	for dir, d := c.Dir, m; ; {
		if pm := d.Get("packageManager"); pm.Str() != "" {
			if name, _, _ := strings.Cut(pm.Text, "@"); contains(managers, name) {
				return name, inside(pm.At())
			}
		}
		if p := join(dir, "pnpm-workspace.yaml"); t.Has(p) {
			return "pnpm", place.Span{File: p, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		}
		if p := join(dir, ".yarnrc.yml"); t.Has(p) {
			return "yarn", place.Span{File: p, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		}
		if dir == "" {
			break
		}
		dir = source.Dir(dir)
		d = r.manifest(t, join(dir, "package.json"))
	}
	for _, d := range c.Descriptors {
		if d.Image == nil {
			continue
		}
		for _, run := range d.Image.Runs {
			for _, w := range strings.Fields(run.Text) {
				if name := strings.Trim(w, `"'[],`); contains(managers, name) && name != "npm" {
					return name, run.At
				}
			}
		}
	}
	for _, sc := range m.Get("scripts").Items() {
		for _, w := range strings.Fields(sc.Str()) {
			if contains(managers, w) && w != "npm" {
				return w, inside(sc.At())
			}
		}
	}
	for _, d := range c.Descriptors {
		if d.Image == nil {
			continue
		}
		for _, run := range d.Image.Runs {
			if strings.Contains(run.Text, "npm ci") || strings.Contains(run.Text, "npm install") {
				return "npm", run.At
			}
		}
	}
	return "", place.Span{}
}

// managers are the package managers that packageManager and engines may name.
var managers = []string{"npm", "yarn", "pnpm", "bun"}

// pins reads every statement of a Node.js version, and of its package
// manager's.
func (r *Runtime) pins(t *source.Tree, c *fact.Component, m *document.Node) {
	add := func(what, from string, e *document.Node) {
		if e != nil && e.Kind == document.String {
			c.Pins = append(c.Pins, survey.ReadPin(what, from, e.Text, survey.RankManifest, inside(e.At())))
		}
	}
	if m != nil {
		add("node", "engines", m.Get("engines", "node"))
		add("node", "volta", m.Get("volta", "node"))
		for _, kind := range []string{"runtime", "packageManager"} {
			list := []*document.Node{m.Get("devEngines", kind)}
			if list[0] != nil && list[0].Kind == document.List {
				list = list[0].Kids
			}
			for _, e := range list {
				if what := e.Get("name").Str(); what == "node" || contains(managers, what) {
					add(what, "devEngines", e.Get("version"))
				}
			}
		}
		for _, what := range managers {
			add(what, "engines of a manager", m.Get("engines", what))
			add(what, "volta", m.Get("volta", what))
		}
		r.managerPin(c, m.Get("packageManager"))
	}
	// What the root of a workspace asks for counts for its members.
	for dir := c.Dir; dir != ""; {
		dir = source.Dir(dir)
		root := r.manifest(t, join(dir, "package.json"))
		if root == nil || root.Get("workspaces") == nil && !t.Has(join(dir, "pnpm-workspace.yaml")) {
			continue
		}
		if m.Get("engines", "node") == nil {
			add("node", "engines", root.Get("engines", "node"))
		}
		if m.Get("volta", "node") == nil {
			add("node", "volta", root.Get("volta", "node"))
		}
		if m.Get("packageManager") == nil {
			r.managerPin(c, root.Get("packageManager"))
		}
		break
	}
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "node")...)
}

// managerPin reads packageManager: a name, @, a whole version, and a hash
// after a plus (Node.js documentation, "Corepack").
func (r *Runtime) managerPin(c *fact.Component, e *document.Node) {
	if e.Str() == "" {
		return
	}
	at := inside(e.At())
	name, ver, ok := strings.Cut(e.Text, "@")
	p := survey.ReadPin(name, "packageManager", ver, survey.RankManifest, at)
	p.Text = e.Text
	switch {
	case !contains(managers, name):
		p.Wrong = name + " is not a package manager that it can name"
	case !ok || !p.Set.Single():
		p.Wrong, p.Known, p.Alias = "it wants a name and one whole version, such as "+name+"@9.15.0", false, false
	}
	p.Form = name + "@V.0.0"
	c.Pins = append(c.Pins, p)
}

// Entry implements survey.Runtime: npm runs server.js where there is no start
// script (npm documentation, "npm start").
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	if t.Has(c.Path("server.js")) {
		return "node server.js", c.Path("server.js"), true
	}
	return "", "", false
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string {
	for _, fw := range frameworks {
		if fw.pkg == pkg {
			return fw.name
		}
	}
	return ""
}

// Assumed implements survey.Runtime: the manifest's main, else a usual name.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	if m := r.manifest(t, c.Path("package.json")); m != nil {
		if main := strings.TrimPrefix(m.Get("main").Str(), "./"); main != "" && t.Has(c.Path(main)) {
			return "node " + main, true
		}
	}
	for _, n := range usualFiles {
		if t.Has(c.Path(n)) {
			return "node " + n, true
		}
	}
	return "", false
}
