package node

import (
	"bytes"
	"path"
	"slices"
	"sort"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/survey"
)

// builtins are the modules of Node.js itself (module.builtinModules of
// Node.js 20 to 26).
const builtins = " assert async_hooks buffer child_process cluster console constants crypto dgram diagnostics_channel dns domain events fs http http2 https inspector module net os path perf_hooks process punycode querystring readline repl stream string_decoder sys timers tls trace_events tty url util v8 vm wasi worker_threads zlib sqlite sea test bun deno "

type modules struct {
	r     *Runtime
	t     *source.Tree
	c     *fact.Component
	paths []mapping         // aliases of TypeScript and of package.json "imports"
	packs map[string]string // packages of the workspace, by name: their folder
	open  bool              // a bundler's configuration may hold more aliases
	dirs  []string          // folders in which packages are looked for besides (NODE_PATH)
}

// Search implements survey.Searching.
func (m *modules) Search(dirs []string) { m.dirs = dirs }

type mapping struct {
	from, to string // with * as in tsconfig
	prefix   bool   // an alias of a folder
}

// Modules implements survey.Runtime (Node.js documentation, "Modules" and
// "Packages"; TypeScript's "paths").
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, dir string) survey.Modules {
	m := &modules{r: r, t: t, c: c, packs: r.workspace(t)}
	for _, name := range []string{"tsconfig.json", "jsconfig.json", "tsconfig.app.json", "tsconfig.base.json"} {
		for d := c.Dir; ; d = source.Dir(d) {
			m.tsconfig(join(d, name), 0)
			if d == "" {
				break
			}
		}
	}
	if p := r.manifest(t, c.Path("package.json")); p != nil {
		for _, i := range p.Get("imports").Items() {
			target := i
			for target != nil && target.Kind == document.Map && len(target.Kids) > 0 {
				target = target.Kids[len(target.Kids)-1]
			}
			if s := target.Str(); s != "" {
				if to, ok := source.Join(c.Dir, s); ok {
					m.paths = append(m.paths, mapping{from: i.Key, to: to})
				}
			}
		}
		for _, a := range p.Get("_moduleAliases").Items() {
			if to, ok := source.Join(c.Dir, a.Str()); ok {
				m.paths = append(m.paths, mapping{from: a.Key, to: to, prefix: true})
			}
		}
	}
	for _, n := range []string{"vite.config.js", "vite.config.ts", "vite.config.mjs", "webpack.config.js", "webpack.config.cjs", "webpack.config.ts", "rollup.config.js", "rollup.config.mjs", "babel.config.js", ".babelrc", "next.config.js", "nuxt.config.ts", "svelte.config.js"} {
		m.open = m.open || t.Has(c.Path(n))
	}
	return m
}

// tsconfig reads baseUrl and paths, following extends.
func (m *modules) tsconfig(name string, depth int) {
	if depth > 4 || !m.t.Has(name) {
		return
	}
	f, err := m.t.Document(name)
	if err != nil {
		return
	}
	d, err := document.JSON(name, f.Data, f.Lines(), true)
	if err != nil {
		return
	}
	dir := source.Dir(name)
	base, hasBase := dir, false
	if b := d.Get("compilerOptions", "baseUrl"); b != nil {
		if j, ok := source.Join(dir, b.Str()); ok {
			base, hasBase = j, true
		}
	}
	for _, p := range d.Get("compilerOptions", "paths").Items() {
		for _, to := range p.Items() {
			if j, ok := source.Join(base, to.Str()); ok {
				m.paths = append(m.paths, mapping{from: p.Key, to: j})
			}
		}
	}
	if hasBase {
		m.paths = append(m.paths, mapping{from: "*", to: join(base, "*")})
	}
	if e := d.Get("extends").Str(); strings.HasPrefix(e, ".") {
		if j, ok := source.Join(dir, e); ok {
			if !strings.HasSuffix(j, ".json") {
				j += ".json"
			}
			m.tsconfig(j, depth+1)
		}
	}
}

// workspace finds the packages of the tree that can be imported by name, once
// a tree.
func (r *Runtime) workspace(t *source.Tree) map[string]string {
	r.mu.Lock()
	packs := r.packs
	r.mu.Unlock()
	if packs != nil {
		return packs
	}
	packs = map[string]string{}
	for _, e := range t.Entries {
		if path.Base(e.Path) != "package.json" || !e.OnDisk {
			continue
		}
		if _, _, dep := source.DependencyPath(e.Path); dep {
			continue
		}
		if d := r.manifest(t, e.Path); d != nil {
			if n := d.Get("name").Str(); n != "" {
				packs[n] = source.Dir(e.Path)
			}
		}
	}
	r.mu.Lock()
	r.packs = packs
	r.mu.Unlock()
	return packs
}

// Package gives the folder of the package of that name in the tree.
func (r *Runtime) Package(t *source.Tree, name string) (dir string, ok bool) {
	dir, ok = r.workspace(t)[name]
	return dir, ok
}

// members notes what the members of a workspace declare: its root installs
// that too.
func (r *Runtime) members(t *source.Tree, c *fact.Component) {
	var dirs []string
	for _, dir := range r.workspace(t) {
		if dir != c.Dir && (c.Dir == "" || strings.HasPrefix(dir, c.Dir+"/")) {
			dirs = append(dirs, dir)
		}
	}
	sort.Strings(dirs)
	for _, dir := range dirs {
		if m := r.manifest(t, join(dir, "package.json")); m != nil {
			for _, d := range m.Get("dependencies").Items() {
				c.Members = append(c.Members, fact.Dependency{Name: d.Key, Spec: d.Str(), Group: "workspace member", Pinned: true, File: join(dir, "package.json"), At: d.KeyAt()})
			}
		}
	}
}

var extensions = []string{"", ".js", ".ts", ".tsx", ".jsx", ".mjs", ".cjs", ".mts", ".cts", ".json"}

// indexes stand for their folder.
var indexes = []string{"index.js", "index.ts", "index.tsx", "index.mjs", "index.cjs", "index.jsx", "index.json"}

// file finds the file of a module path.
func (m *modules) file(p string) (string, bool) { return m.fileOf(p, true) }

// fold finds the file of a module path whose letters have another case.
func (m *modules) fold(p string) string {
	for _, ext := range append(extensions, "/index.js", "/index.ts", "/index.mjs", "/index.tsx") {
		if e, ok := m.t.Fold(p + ext); ok && p != "" {
			return e.Path
		}
	}
	return ""
}

// fileOf follows the main of a folder once: Node.js takes it as a file or as
// the index of a folder, and reads no second manifest (Node.js documentation,
// "LOAD_AS_DIRECTORY").
func (m *modules) fileOf(p string, manifest bool) (string, bool) {
	for _, ext := range extensions {
		if p != "" && m.t.Has(p+ext) {
			return p + ext, true
		}
	}
	// TypeScript writes the name of the output: ./x.js is x.ts.
	if i := strings.LastIndexByte(p, '.'); i > 0 {
		switch p[i:] {
		case ".js", ".jsx", ".mjs", ".cjs":
			for _, ext := range []string{".ts", ".tsx", ".mts", ".cts"} {
				if m.t.Has(p[:i] + ext) {
					return p[:i] + ext, true
				}
			}
		}
	}
	if d := m.r.manifest(m.t, join(p, "package.json")); manifest && d != nil {
		if main := d.Get("main").Str(); main != "" && main != "." && main != "./" {
			if j, ok := source.Join(p, main); ok && j != p {
				if f, ok := m.fileOf(j, false); ok {
					return f, true
				}
			}
		}
	}
	for _, index := range indexes {
		if m.t.Has(join(p, index)) {
			return join(p, index), true
		}
	}
	return "", false
}

// Resolve implements survey.Modules.
func (m *modules) Resolve(from *code.File, module, _ string) (string, bool) {
	if relative(module) {
		p, ok := source.Join(source.Dir(from.Name), module)
		if !ok {
			return "", false
		}
		return m.file(p)
	}
	for _, mp := range m.paths {
		if p, ok := mp.apply(module); ok {
			if f, ok := m.file(p); ok {
				return f, true
			}
		}
	}
	if dir, ok := m.packs[packageOf(module)]; ok {
		rest := strings.TrimPrefix(module, packageOf(module))
		if d := m.r.manifest(m.t, join(dir, "package.json")); d.Get("exports") != nil {
			if to := exported(d.Get("exports"), "."+rest); to != "" {
				if p, ok := source.Join(dir, to); ok {
					return m.file(p)
				}
			}
		}
		if rest == "" {
			if f, ok := m.file(dir); ok {
				return f, true
			}
			return m.file(join(dir, "src/index"))
		}
		return m.file(dir + rest)
	}
	for _, d := range m.dirs {
		if p, ok := source.Join(d, module); ok {
			if f, ok := m.file(p); ok {
				return f, true
			}
		}
	}
	return "", false
}

// exported is the file that a package gives under a path, ./x: the first of the conditions
// that Node.js knows, and the longest pattern (Node.js 24, "Package entry points").
func exported(exports *document.Node, path string) string {
	if exports.Kind != document.Map || len(exports.Kids) > 0 && !strings.HasPrefix(exports.Kids[0].Key, ".") {
		if path != "." {
			return ""
		}
		return condition(exports, 0)
	}
	if to := exports.Get(path); to != nil {
		return condition(to, 0)
	}
	best, rest := (*document.Node)(nil), ""
	for _, e := range exports.Kids {
		before, after, star := strings.Cut(e.Key, "*")
		if star && strings.HasPrefix(path, before) && strings.HasSuffix(path, after) && len(path) >= len(e.Key) && (best == nil || len(e.Key) > len(best.Key)) {
			best, rest = e, path[len(before):len(path)-len(after)]
		}
	}
	if best == nil {
		return ""
	}
	return strings.ReplaceAll(condition(best, 0), "*", rest)
}

// condition is the target of an entry: the first that counts.
func condition(n *document.Node, depth int) string {
	switch {
	case n == nil || depth > 20:
		return ""
	case n.Kind == document.Map:
		for _, k := range n.Kids {
			switch k.Key {
			case "node", "import", "require", "module-sync", "default":
				if to := condition(k, depth+1); to != "" {
					return to
				}
			}
		}
		return ""
	case n.Kind == document.List:
		for _, k := range n.Kids {
			if to := condition(k, depth+1); to != "" {
				return to
			}
		}
		return ""
	}
	return n.Str()
}

func (mp mapping) apply(module string) (string, bool) {
	if mp.prefix {
		if rest, ok := strings.CutPrefix(module, mp.from); ok && (rest == "" || rest[0] == '/') {
			return mp.to + rest, true
		}
		return "", false
	}
	pre, post, star := strings.Cut(mp.from, "*")
	if !star {
		return mp.to, module == mp.from
	}
	if strings.HasPrefix(module, pre) && strings.HasSuffix(module, post) && len(module) >= len(pre)+len(post) {
		return strings.Replace(mp.to, "*", module[len(pre):len(module)-len(post)], 1), true
	}
	return "", false
}

func relative(module string) bool {
	return strings.HasPrefix(module, "./") || strings.HasPrefix(module, "../") || module == "." || module == ".."
}

// packageOf is the name of the package of a module path.
func packageOf(module string) string {
	parts := strings.SplitN(module, "/", 3)
	if strings.HasPrefix(module, "@") && len(parts) > 1 {
		return parts[0] + "/" + parts[1]
	}
	return parts[0]
}

// Classify implements survey.Modules.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	name := imp.Name
	i := fact.Import{Module: name, From: from.Name, At: from.At(imp), TypeOnly: imp.Flag&code.TypeOnly != 0}
	switch {
	case name == "" || strings.ContainsAny(name, "!?\x00"):
		return nil // loaders of bundlers
	case relative(name):
		i.Relative = true
		f, ok := m.Resolve(from, name, "")
		if ok {
			i.File = f
			break
		}
		p, inTree := source.Join(source.Dir(from.Name), name)
		i.Missing = inTree && !m.made(p)
		if inTree {
			i.Case = m.fold(p)
		}
		i.File = ""
	case strings.HasPrefix(name, "/") || strings.HasPrefix(name, "file:") || strings.HasPrefix(name, "data:") || strings.Contains(name, "://"):
		return nil
	case strings.Contains(name, ":"): // node:, bun:, virtual:, npm:
		i.Standard = true
	case strings.Contains(builtins, " "+packageOf(name)+" ") && !strings.HasSuffix(name, "/"):
		i.Standard = true
	default:
		if f, ok := m.Resolve(from, name, ""); ok {
			i.File = f
			break
		}
		if _, ok := m.packs[packageOf(name)]; ok {
			i.Standard = true
			break
		}
		for _, mp := range m.paths {
			if mp.from != "*" {
				if _, ok := mp.apply(name); ok { // an alias, to something generated
					i.Standard = true
				}
			}
		}
		if strings.HasPrefix(name, "#") || strings.HasPrefix(name, "~") || strings.HasPrefix(name, "@/") || strings.HasPrefix(name, "$") {
			i.Standard = true
		}
		i.Package = packageOf(name)
		if m.elsewhere(from.Name, i.Package) {
			i.Standard = true
		}
		if m.open {
			// An alias of the bundler may stand for it; a package that is
			// declared is known anyway.
			if _, declared := m.c.Dep(i.Package); !declared && m.t.HasDir(m.c.Path("src")) && m.t.HasDir(m.c.Path("src/"+i.Package)) {
				i.Standard = true
			}
		}
	}
	return []fact.Import{i}
}

// elsewhere reports whether a file belongs to another package of the tree that
// declares what it imports by itself.
func (m *modules) elsewhere(file, pkg string) bool {
	for d := source.Dir(file); d != m.c.Dir; d = source.Dir(d) {
		if p := m.r.manifest(m.t, join(d, "package.json")); p != nil {
			return p.Get("dependencies", pkg) != nil || p.Get("peerDependencies", pkg) != nil || p.Get("optionalDependencies", pkg) != nil
		}
		if d == "" {
			break
		}
	}
	return false
}

// made tells paths that a build makes.
func (m *modules) made(p string) bool {
	parts := strings.Split(p, "/")
	for n, part := range parts {
		if dir := strings.Join(parts[:n+1], "/"); part == "lib" && m.written(dir) || m.nobodys(dir) {
			continue
		}
		switch part {
		case "dist", "build", "out", "lib", "generated", ".next", ".output", "gen", "__generated__":
			return true
		}
	}
	return strings.HasSuffix(p, ".node") || strings.HasSuffix(p, ".wasm") || strings.HasSuffix(p, ".css") || strings.HasSuffix(p, ".scss") || strings.HasSuffix(p, ".svg")
}

// nobodys reports whether nothing makes a folder with a name that builds use: it is not on
// disk, the package has no script but those that use what is there, no file at its root or
// the root of the tree is read by a build, and git neither ignores it nor brings it from
// elsewhere.
func (m *modules) nobodys(dir string) bool {
	if m.t.HasDir(dir) || len(m.t.Below(dir)) > 0 {
		return false
	}
	for name := range m.c.Scripts {
		if first, _, _ := strings.Cut(name, ":"); !uses[first] {
			return false
		}
	}
	for d := source.Dir(dir); d != m.c.Dir; d = source.Dir(d) { // another package, which may be built
		if m.t.Has(join(d, "package.json")) {
			return false
		}
		if d == "" {
			break
		}
	}
	for _, d := range []string{m.c.Dir, ""} {
		for _, e := range m.t.In(d) {
			name := path.Base(e.Path)
			if name == ".gitignore" || name == ".gitmodules" {
				f, err := m.t.Code(e.Path)
				if err != nil || bytes.Contains(f.Data, []byte(path.Base(dir))) {
					return false
				}
			} else if builds(name) && !strings.EqualFold(name, "Procfile") {
				return false
			}
		}
	}
	return true
}

// written reports whether a folder that a build may be told to fill holds source instead:
// files of it ship, and neither a script of the package, nor a file that one runs, nor the
// settings of a tool name it.
func (m *modules) written(dir string) bool {
	base := dir[strings.LastIndexByte(dir, '/')+1:]
	if !slices.ContainsFunc(m.t.Below(dir), func(e source.Entry) bool { return m.t.State(e.Path) == source.Shipped }) {
		return false
	}
	var files []string
	for name, s := range m.c.Scripts {
		if first, _, _ := strings.Cut(name, ":"); uses[first] {
			continue
		}
		for _, w := range strings.FieldsFunc(s.Text, func(r rune) bool { return strings.ContainsRune(" =\"';&|()", r) }) {
			if slices.Contains(strings.Split(w, "/"), base) {
				return false
			}
			files = append(files, m.c.Path(path.Clean(w)))
		}
	}
	for _, e := range m.t.In(m.c.Dir) {
		if builds(path.Base(e.Path)) {
			files = append(files, e.Path)
		}
	}
	for _, f := range files {
		if src, err := m.t.Code(f); m.t.Has(f) && err == nil && bytes.Contains(src.Data, []byte(base)) {
			return false
		}
	}
	return true
}

// uses are scripts of a package that make nothing the program needs, by their usual names.
var uses = map[string]bool{"start": true, "serve": true, "dev": true, "develop": true, "watch": true, "debug": true, "test": true, "lint": true, "format": true, "typecheck": true}

// builds reports whether a file beside the manifest tells a tool what to make, by its name.
func builds(name string) bool {
	return strings.Contains(name, ".config.") || strings.Contains(name, "rc") && name[0] == '.' || strings.HasPrefix(name, "tsconfig") || strings.HasSuffix(name, "file") || strings.HasSuffix(name, "file.js")
}
