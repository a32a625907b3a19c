package node

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
)

// Applications whose build makes files: what the build command is and which
// folder it writes, computed from their configuration. Source: each tool's
// documentation of its configuration, read 2026-11.

// views are the libraries of the browser, by the name to show.
var views = [][2]string{{"react", "React"}, {"vue", "Vue"}, {"svelte", "Svelte"}, {"@angular/core", "Angular"}, {"preact", "Preact"}, {"solid-js", "Solid"}, {"lit", "Lit"}, {"@builder.io/qwik", "Qwik"}, {"vite", "Vite"}}

// kits are frameworks whose build makes files or a server, after their
// configuration; they are often declared for development.
var kits = []struct {
	pkg, name string
	configs   []string
	look      func(*output)
}{
	{"next", "Next.js", []string{"next.config.js", "next.config.mjs", "next.config.ts", "next.config.cjs"}, nextOutput},
	{"nuxt", "Nuxt", []string{"nuxt.config.ts", "nuxt.config.js", "nuxt.config.mjs"}, nuxtOutput},
	{"@sveltejs/kit", "SvelteKit", []string{"svelte.config.js", "svelte.config.ts", "svelte.config.mjs"}, svelteOutput},
	{"astro", "Astro", []string{"astro.config.mjs", "astro.config.ts", "astro.config.js"}, astroOutput},
	{"@react-router/dev", "React Router", []string{"react-router.config.ts", "react-router.config.js"}, routerOutput},
	{"@remix-run/dev", "Remix", []string{"vite.config.ts", "remix.config.js"}, routerOutput},
	{"gatsby", "Gatsby", []string{"gatsby-config.js", "gatsby-config.ts"}, func(o *output) { o.files("public") }},
	{"@11ty/eleventy", "Eleventy", []string{"eleventy.config.js", ".eleventy.js", "eleventy.config.mjs"}, func(o *output) { o.files(o.setting("_site", "dir", "output")) }},
	{"@docusaurus/core", "Docusaurus", []string{"docusaurus.config.js", "docusaurus.config.ts"}, func(o *output) { o.files("build") }},
	{"@angular/core", "Angular", []string{"angular.json"}, nil},
	{"react-scripts", "Create React App", nil, func(o *output) { o.files(o.flag("build", "BUILD_PATH=")) }},
	{"@vue/cli-service", "Vue CLI", []string{"vue.config.js", "vue.config.ts"}, func(o *output) { o.files(o.flag(o.setting("dist", "outputDir"), "--dest")) }},
	{"vite", "Vite", []string{"vite.config.ts", "vite.config.js", "vite.config.mjs", "vite.config.mts", "vite.config.cjs"}, viteOutput},
	{"parcel", "Parcel", nil, func(o *output) { o.files(o.flag("dist", "--dist-dir", "-d")) }},
	{"webpack", "webpack", []string{"webpack.config.js", "webpack.config.ts", "webpack.prod.js", "webpack.config.cjs", "webpack.config.mjs"}, func(o *output) { o.files(o.flag(o.setting("dist", "output", "path"), "--output-path", "-o")) }},
}

// output is what is found out of one build.
type output struct {
	t      *source.Tree
	c      *fact.Component
	cfg    *code.File
	script string // the text of the build script
	made   []fact.Artefact
	at     place.Span
	open   string // what could not be told
	server bool   // the build makes a server
}

// files adds a folder of files; an empty one is not known.
func (o *output) files(dir string) {
	if dir == "" {
		return
	}
	p, ok := source.Join(o.c.Dir, strings.TrimPrefix(dir, "./"))
	if !ok {
		o.open = dir + " lies outside the tree"
		return
	}
	o.made = append(o.made, fact.Artefact{Kind: "files", Path: p, At: o.at})
}

func (o *output) serve(file string) {
	o.server = true
	o.made = append(o.made, fact.Artefact{Kind: "server", Path: o.c.Path(file), At: o.at})
}

// value finds what a configuration sets under a path of keys.
func (o *output) value(keys ...string) *code.Node {
	if o.cfg == nil {
		return nil
	}
	var found *code.Node
	var look func(n *code.Node, keys []string)
	look = func(n *code.Node, keys []string) {
		n.Walk(func(k *code.Node) bool {
			if found != nil {
				return false
			}
			if k.Is(code.Pair) && k.Name == keys[0] {
				if len(keys) == 1 {
					found = k.Kid(0)
				} else if k.Kid(0) != nil {
					look(k.Kid(0), keys[1:])
				}
				return found == nil
			}
			return true
		})
	}
	look(o.cfg.Body, keys)
	return found
}

// setting gives a text of the configuration, or what is taken without it;
// empty where it is computed in a way that is not followed.
func (o *output) setting(def string, keys ...string) string {
	n := o.value(keys...)
	if n == nil {
		return def
	}
	if s, ok := o.text(n, 0); ok {
		o.at = o.cfg.At(n)
		return s
	}
	o.open = strings.Join(keys, ".") + " is computed in " + o.cfg.Name
	return ""
}

// text gives a literal, a constant of the file, or the last part of a path
// that is put together from the folder of the file.
func (o *output) text(n *code.Node, depth int) (string, bool) {
	switch {
	case n.Is(code.String):
		return n.Name, true
	case n.Is(code.Template) && len(n.Kids) == 1 && n.Kids[0].Is(code.String):
		return n.Kids[0].Name, true
	case n.Is(code.Name) && depth < 5:
		for _, b := range o.cfg.Top.Names[n.Name] {
			if b.Value != nil && len(o.cfg.Top.Names[n.Name]) == 1 {
				return o.text(b.Value, depth+1)
			}
		}
	case n.Is(code.Call):
		switch survey.Callee(n) {
		case "resolve", "join":
			args := n.Args()
			var parts []string
			for i, a := range args {
				if s, ok := o.text(a, depth+1); ok {
					parts = append(parts, s)
				} else if i > 0 || a.Dotted() != "__dirname" && a.Dotted() != "import.meta.dirname" && survey.Callee(a) != "cwd" {
					return "", false
				}
			}
			return path.Join(parts...), len(parts) > 0
		case "fileURLToPath":
			return o.text(n.Kid(1), depth+1)
		}
	case n.Is(code.New) && len(n.Kids) > 1: // new URL('./x', import.meta.url)
		return o.text(n.Kids[1], depth+1)
	}
	return "", false
}

// flag gives the value of a flag of the build script, or what is taken
// without it.
func (o *output) flag(def string, names ...string) string {
	words := strings.Fields(o.script)
	for i, w := range words {
		for _, n := range names {
			if rest, ok := strings.CutPrefix(w, n); ok && (rest == "" || rest[0] == '=' || strings.HasSuffix(n, "=")) {
				if rest = strings.Trim(strings.TrimPrefix(rest, "="), `"'`); rest != "" {
					return rest
				}
				if i+1 < len(words) {
					return strings.Trim(words[i+1], `"'`)
				}
			}
		}
	}
	return def
}

// imports reports whether the configuration takes something from a package.
func (o *output) imports(pkg string) bool {
	if o.cfg == nil {
		return false
	}
	for _, i := range o.cfg.Imports {
		if i.Node.Name == pkg {
			return true
		}
	}
	return false
}

func viteOutput(o *output) {
	dir := o.flag("", "--outDir")
	if dir == "" {
		dir = o.setting("dist", "build", "outDir")
	}
	if root := o.value("root"); root != nil && dir != "" {
		s, ok := o.text(root, 0)
		if !ok {
			o.open = "root is computed in " + o.cfg.Name
			return
		}
		dir = path.Join(s, dir)
	}
	o.files(dir)
}

func nextOutput(o *output) {
	if out := o.value("output"); out.Is(code.String) && out.Name == "export" {
		o.files(o.setting("out", "distDir"))
		return
	}
	o.serve(".next")
	if out := o.value("output"); out.Is(code.String) && out.Name == "standalone" {
		o.serve(".next/standalone/server.js")
	}
}

func nuxtOutput(o *output) {
	if strings.Contains(o.script, "generate") {
		o.files(".output/public")
		return
	}
	o.serve(".output/server/index.mjs")
}

func svelteOutput(o *output) {
	switch {
	case o.imports("@sveltejs/adapter-static"):
		o.files(o.setting("build", "pages"))
	case o.imports("@sveltejs/adapter-node"):
		o.serve(path.Join(o.setting("build", "out"), "index.js"))
	case declares(o.c, "@sveltejs/adapter-node") && !declares(o.c, "@sveltejs/adapter-static"):
		o.serve("build/index.js")
	default:
		o.open = "the adapter decides what the build makes"
	}
}

func declares(c *fact.Component, name string) bool {
	_, ok := c.Dep(name)
	return ok
}

func astroOutput(o *output) {
	dir := o.setting("dist", "outDir")
	if dir == "" {
		return
	}
	if o.imports("@astrojs/node") || declares(o.c, "@astrojs/node") {
		o.serve(path.Join(dir, "server/entry.mjs"))
		return
	}
	o.files(dir)
}

func routerOutput(o *output) {
	dir := o.setting("build", "buildDirectory")
	if dir == "" {
		return
	}
	if ssr := o.value("ssr"); ssr.Is(code.False) {
		o.files(path.Join(dir, "client"))
		return
	}
	o.serve(path.Join(dir, "server/index.js"))
}

// angular reads where the builds of angular.json write ("Angular workspace
// configuration").
func (o *output) angular() {
	d, _ := survey.Document(o.t, o.c.Path("angular.json"))
	for _, p := range d.Get("projects").Items() {
		if p.Get("projectType").Str() == "library" {
			continue
		}
		build := p.Get("architect", "build")
		if build == nil {
			build = p.Get("targets", "build")
		}
		if build == nil {
			continue
		}
		out := build.Get("options", "outputPath")
		builder := build.Get("builder").Str()
		dir := "dist/" + p.Key
		browser := strings.HasSuffix(builder, ":application")
		sub := "browser"
		o.at = build.KeyAt()
		if out != nil {
			o.at = out.At()
			if out.Kind == document.Map {
				dir = out.Get("base").Str()
				if b := out.Get("browser"); b != nil {
					sub = b.Str()
				}
			} else {
				dir = out.Str()
			}
		}
		if browser {
			dir = path.Join(dir, sub)
		}
		o.files(dir)
	}
}

// artefacts finds out what the build script makes, and whether the component
// is only an application of the browser.
func (r *Runtime) artefacts(t *source.Tree, c *fact.Component, m *document.Node) {
	build := ""
	at := place.Whole(c.Path("package.json"))
	if s, ok := c.Scripts["build"]; ok {
		build, at = s.Text, s.At
	}
	started := c.Scripts["start"].Text
	for _, k := range kits {
		if _, ok := c.Dep(k.pkg); !ok || inherited(c, k.pkg) && !configured(t, c, k.configs) {
			continue
		}
		if k.pkg == "webpack" && !configured(t, c, k.configs) {
			continue
		}
		o := &output{t: t, c: c, script: build, at: at}
		for _, n := range k.configs {
			if t.Has(c.Path(n)) && k.pkg != "@angular/core" {
				o.cfg = survey.Code(t, c.Path(n), code.LanguageOf(n))
				break
			}
		}
		if k.pkg == "@angular/core" {
			o.angular()
		} else {
			k.look(o)
		}
		if o.server && !contains(c.Frameworks, k.name) || k.pkg == "@sveltejs/kit" || k.pkg == "astro" {
			if !contains(c.Frameworks, k.name) {
				c.Frameworks = append(c.Frameworks, k.name)
			}
		}
		serves := len(c.Frameworks) > 0 && !(len(c.Frameworks) == 1 && c.Frameworks[0] == k.name)
		if !o.server && !serves && (o.open == "" || k.name == "Vite") {
			// A start script that serves the sources makes it a server all the
			// same, and start/dev-server says what is wrong with it.
			if started == "" && !contains(c.Frameworks, "browser application") && !described(survey.Folder{Dir: c.Dir, Names: names(t, c.Dir)}) {
				c.Frameworks = append([]string{"browser application"}, c.Frameworks...)
			}
			if !contains(c.Frameworks, k.name) && k.name != "Vite" && k.name != "webpack" {
				c.Frameworks = append(c.Frameworks, k.name)
			}
			for _, v := range views {
				if _, ok := c.Dep(v[0]); ok && !contains(c.Frameworks, v[1]) && v[1] != k.name || v[1] == "Vite" && k.name == "Vite" {
					c.Frameworks = append(c.Frameworks, v[1])
				}
			}
		}
		for i := range o.made {
			o.made[i].Build = runBuild(c, build)
		}
		c.Artefacts = append(c.Artefacts, o.made...)
		if o.open != "" {
			c.Unknown = append(c.Unknown, fact.Question{Question: "what the build makes", Reason: o.open, At: o.at})
		}
		return
	}
	_ = m
}

// names lists the files of a folder.
func names(t *source.Tree, dir string) map[string]bool {
	m := map[string]bool{}
	for _, e := range t.In(dir) {
		m[path.Base(e.Path)] = e.OnDisk
	}
	return m
}

// inherited reports whether a package is declared only by the root of the
// workspace.
func inherited(c *fact.Component, pkg string) bool {
	d, _ := c.Dep(pkg)
	return d.Group == "workspace root" || d.Group == "workspace member"
}

func configured(t *source.Tree, c *fact.Component, configs []string) bool {
	for _, n := range configs {
		if t.Has(c.Path(n)) {
			return true
		}
	}
	return false
}

// runBuild is how the build script is run.
func runBuild(c *fact.Component, script string) string {
	if script == "" {
		return ""
	}
	manager := "npm"
	if len(c.Manifests) > 0 && c.Manifests[0].Manager != "" {
		manager = c.Manifests[0].Manager
	}
	return manager + " run build (" + code.Squeeze(script, 60) + ")"
}
