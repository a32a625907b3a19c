// Package start holds the rules on how a component starts.
package start

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey/node"
	"ubique/core/value"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{missing, webMissing, devServer, reload, targetMissing, importMissing, callableMissing, programUndeclared, disagree}

var missing = &rules.Rule{
	ID: "start/missing", Level: rules.Blocker, Title: "nothing says how to start", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			c := p.Component
			if on.Start != nil {
				if m := on.Start.Final.Missing; m != nil && m.Kind == "script" {
					p.Report(on, 0, rules.Finding{Where: m.At, Message: fmt.Sprintf("runs the script %s, which package.json does not have", m.Name), Remedy: fmt.Sprintf(`"scripts": { "%s": "node FILE" }`, m.Name)})
				}
				continue
			}
			if on.Host.WebRequired && hasProcessFile(c) {
				continue // start/web-missing
			}
			at := place.Whole(c.ID)
			if len(c.Manifests) > 0 {
				at = place.Span{File: c.Manifests[0].File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
			}
			for _, d := range c.Descriptors {
				if d.Image != nil && on.Host.Route == "image" {
					at = place.Span{File: d.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
				}
			}
			remedy := "a Procfile with the line: web: COMMAND"
			if c.Runtime == "node" {
				remedy = `in package.json: "scripts": { "start": "node FILE" }`
			}
			if slices.Contains(c.Frameworks, "Django") {
				remedy = "a Procfile with the line: web: gunicorn PROJECT.wsgi --bind 0.0.0.0:$PORT"
			}
			if on.Host.Route == "image" {
				remedy = `CMD ["PROGRAM", "ARGUMENT"]`
			}
			p.Report(on, 0, rules.Finding{Where: at, Message: "nothing says how to start this: no " + strings.Join(on.Host.Starts, ", no "), Remedy: remedy})
		}
	},
}

func hasProcessFile(c *fact.Component) bool {
	for _, d := range c.Descriptors {
		if d.Format == "process file" && d.Err == nil && len(d.Procs) > 0 {
			return true
		}
	}
	return false
}

var webMissing = &rules.Rule{
	ID: "start/web-missing", Level: rules.Blocker, Title: "a process file without the process that is reached", Doc: doc("web-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if !on.Host.WebRequired {
				continue
			}
			for _, d := range p.Component.Descriptors {
				if d.Format != "process file" || d.Err != nil || len(d.Procs) == 0 {
					continue
				}
				var names []string
				has := false
				for _, x := range d.Procs {
					names = append(names, x.Name)
					has = has || x.Name == on.Host.Process
				}
				if has {
					continue
				}
				pr := d.Procs[0]
				for _, x := range d.Procs {
					if strings.EqualFold(x.Name, on.Host.Process) {
						pr = x
					}
				}
				p.Report(on, 0, rules.Finding{Where: pr.NameAt, Message: fmt.Sprintf("%s has the processes %s and no %s, the only one that this host reaches from outside", d.File, strings.Join(names, ", "), on.Host.Process), Remedy: on.Host.Process + ": " + pr.Command})
			}
		}
	},
}

// dev gives why a start is a development server, and where that is written.
func dev(s *fact.Start) (why string, at place.Span, l *fact.Listener) {
	for _, x := range s.Listeners {
		if !x.Dev {
			continue
		}
		held := true
		for _, g := range x.Guards {
			if yes, ok := g.Under(value.Environ{Open: true}).Truth(false); ok && !yes {
				held = false
			}
		}
		if held {
			l = x
		}
	}
	k := s.Final.Known
	if k != nil && k.Dev != "" && (l != nil || k.Server == "") {
		if k.Name == "vite" && len(s.Final.Free()) > 0 && (s.Final.Free()[0].Text == "build" || s.Final.Free()[0].Text == "preview") {
			return "", at, nil
		}
		return "the start command runs " + s.Final.Program + ", " + k.Dev, s.Final.At, l
	}
	switch {
	case k != nil && k.Name == "react-scripts" && first(s) == "start", k != nil && k.Name == "ng" && first(s) == "serve", k != nil && k.Name == "webpack" && first(s) == "serve", k != nil && k.Name == "nuxt" && first(s) == "dev":
		return "the start command runs " + k.Name + " " + first(s) + ", a development server", s.Final.At, nil
	}
	if l == nil {
		return "", at, nil
	}
	switch l.Server {
	case "runserver":
		return "the start command runs manage.py runserver, the development server of Django", l.At, l
	case "next", "fastapi dev":
		return "the start command runs " + s.Final.Program + " in its development mode", s.Final.At, l
	case "flask":
		// The file is started as a program and serves by itself.
		return fmt.Sprintf("the start command runs %s, which serves with app.run(), the development server of the framework", path.Base(s.Target.File)), s.Final.At, l
	}
	return "the start command runs a development server", s.Final.At, l
}

func first(s *fact.Start) string {
	if f := s.Final.Free(); len(f) > 0 {
		return f[0].Text
	}
	return ""
}

var devServer = &rules.Rule{
	ID: "start/dev-server", Level: rules.Risk, Title: "a development server is started", Doc: doc("dev-server"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			why, at, l := dev(on.Start)
			if why == "" {
				continue
			}
			level := rules.Risk
			f := rules.Finding{Where: at, Message: why}
			if l != nil {
				out := l.Under(on.Ported)
				if out.Outcome == "listens" && (out.Interface == "loopback" && on.Host.Reach == "any" || on.Port > 0 && out.Port != on.Port) {
					level = rules.Blocker
					f.Message += fmt.Sprintf("; it listens on %s, port %d, where the host does not reach it", out.Interface, out.Port)
				}
				if l.At.File != at.File || l.At.Line != at.Line {
					f.Trail = append(f.Trail, rules.Step(l.At, "listens here"))
				}
			}
			f.Trail = append(append([]value.Step(nil), on.Start.Final.Steps...), f.Trail...)
			f.Remedy = production(p.Component, on)
			p.Report(on, level, f)
		}
	},
}

// production is a start command for production, with the names of this tree.
func production(c *fact.Component, on *rules.On) string {
	bind := "0.0.0.0:$PORT"
	if on.Host.Port.How != "injected" {
		bind = "0.0.0.0:8000"
	}
	s := on.Start
	if c.Runtime == "node" {
		if s.Final.Known != nil && s.Final.Known.Name == "next" {
			return "next start, after next build"
		}
		return "build the application, and serve what the build makes"
	}
	if slices.Contains(c.Frameworks, "Django") {
		app := "PROJECT"
		if s.Config != nil {
			dir := path.Dir(strings.TrimPrefix(s.Config.Name, c.Dir+"/"))
			for strings.HasSuffix(dir, "settings") {
				dir = path.Dir(dir)
			}
			if dir != "." {
				app = strings.ReplaceAll(dir, "/", ".")
			}
		}
		return fmt.Sprintf("gunicorn %s.wsgi --bind %s", app, bind)
	}
	module := "app"
	if s.Target != nil && s.Target.File != "" {
		module = strings.ReplaceAll(strings.TrimSuffix(strings.TrimPrefix(s.Target.File, c.Dir+"/"), ".py"), "/", ".")
	}
	name := "app"
	if s.Program != nil && s.Target != nil {
		name = applicationName(s)
	}
	if slices.Contains(c.Frameworks, "FastAPI") || slices.Contains(c.Frameworks, "Starlette") {
		return fmt.Sprintf("uvicorn %s:%s --host 0.0.0.0 --port %s", module, name, strings.TrimPrefix(bind, "0.0.0.0:"))
	}
	return fmt.Sprintf("gunicorn %s:%s --bind %s", module, name, bind)
}

// applicationName finds the name that an application object has in the file
// that is started.
func applicationName(s *fact.Start) string {
	if f := s.Program.Loader.File(s.Target.File); f != nil {
		var names []string
		for n := range f.Top.Names {
			names = append(names, n)
		}
		slices.Sort(names)
		for _, n := range names {
			if v := s.Program.Name(f, n); v != nil && v.Kind == value.External && (v.Text == "flask.Flask()" || v.Text == "fastapi.FastAPI()" || v.Text == "quart.Quart()" || v.Text == "starlette.applications.Starlette()") {
				return n
			}
		}
	}
	return "app"
}

var reload = &rules.Rule{
	ID: "start/reload", Level: rules.Risk, Title: "the program watches files, reloads or opens a debugger", Doc: doc("reload"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			f := on.Start.Final
			if f.Manager == "nodemon" || f.Manager == "ts-node-dev" {
				at := f.At
				for _, w := range f.Wrapped {
					if w.Name == f.Manager {
						at = w.At
					}
				}
				p.Report(on, 0, rules.Finding{Where: at, Trail: f.Steps, Message: f.Manager + " restarts the program when a file changes: for work on it, not for a host", Remedy: "node " + targetText(on.Start)})
				continue
			}
			if f.Watching != nil {
				if f.Known != nil && f.Known.Dev != "" && f.Known.Name == "flask" {
					continue // start/dev-server says it all
				}
				p.Report(on, 0, rules.Finding{Where: f.Watching.At, Trail: f.Steps, Message: fmt.Sprintf("%s makes %s watch, reload or open a debugger: for work on it, not for a host", f.Watching.Text, f.Program), Remedy: "the command without " + f.Watching.Text})
				continue
			}
			for _, l := range reloads(on) {
				p.Report(on, 0, l)
			}
		}
	},
}

// reloads finds uvicorn.run(reload=True) in the code that is started.
func reloads(on *rules.On) []rules.Finding {
	var list []rules.Finding
	s := on.Start
	for _, l := range s.Listeners {
		if l.Via != "code" || l.Server != "uvicorn.run" {
			continue
		}
		f := s.Program.Loader.File(l.At.File)
		if f == nil || l.Under(on.Ported).Outcome == "skipped" {
			continue
		}
		for _, site := range f.Calls {
			if f.At(site.Node) != l.At {
				continue
			}
			for _, a := range site.Node.Args() {
				if !a.Is(code.Keyword) || a.Name != "reload" {
					continue
				}
				if yes, ok := s.Program.Expr(a.Kid(0), site.Scope).Under(on.Ported).Truth(true); ok && yes {
					list = append(list, rules.Finding{Where: f.At(a), Message: "reload makes uvicorn watch the files and restart: for work on it, not for a host", Remedy: "reload=False"})
				}
			}
		}
	}
	return list
}

func targetText(s *fact.Start) string {
	if s.Target != nil {
		return s.Target.Named
	}
	for _, a := range s.Final.Args {
		if !strings.HasPrefix(a.Text, "-") {
			return a.Text
		}
	}
	return "FILE"
}

// shipped reports whether the start's target reaches the host at all; the
// ship rules say where it is kept back.
var targetMissing = &rules.Rule{
	ID: "start/target-missing", Level: rules.Blocker, Title: "the file or module to start is not there", Doc: doc("target-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			s := on.Start
			if m := s.Final.Missing; m != nil && m.Kind == "file" {
				p.Report(on, 0, rules.Finding{Where: m.At, Trail: s.Final.Steps, Message: fmt.Sprintf("runs %s, which is nowhere in the tree", m.Name), Remedy: near(p, s, m.Name)})
				continue
			}
			t := s.Target
			if t == nil || t.File != "" || t.Built {
				continue
			}
			what := t.Named
			if t.Kind == command.CallableTarget || s.Final.Via != "" {
				what = "the module " + t.Module
			}
			from := s.Final.Dir
			if from == "" {
				from = "the root of the tree"
			}
			p.Report(on, 0, rules.Finding{Where: t.At, Trail: s.Final.Steps, Message: fmt.Sprintf("starts %s, and there is no such file seen from %s", what, from), Remedy: near(p, s, t.Named)})
		}
	},
}

// near looks for what was probably meant: a file of that name elsewhere, or
// the usual start file.
func near(p *rules.Pass, s *fact.Start, name string) string {
	module, callable, has := strings.Cut(name, ":")
	base := path.Base(strings.ReplaceAll(module, ".", "/"))
	if path.Ext(name) != "" && !has {
		base = path.Base(name)
	}
	python := p.Component.Runtime == "python"
	var found []string
	for _, e := range p.Tree.Below(p.Component.Dir) {
		b := path.Base(e.Path)
		if _, _, dep := source.DependencyPath(e.Path); dep || !e.OnDisk {
			continue
		}
		if strings.EqualFold(b, base) || strings.EqualFold(strings.TrimSuffix(b, path.Ext(b)), strings.TrimSuffix(base, path.Ext(base))) && (strings.HasSuffix(b, ".js") || strings.HasSuffix(b, ".py") || strings.HasSuffix(b, ".mjs") || strings.HasSuffix(b, ".ts")) {
			found = append(found, e.Path)
		}
	}
	if len(found) == 0 {
		names := []string{"server.js", "app.js", "index.js", "src/server.js", "src/index.js", "src/app.js", "main.js"}
		if python {
			names = []string{"app.py", "main.py", "wsgi.py", "server.py", "src/app.py", "src/main.py", "app/main.py"}
		}
		for _, n := range names {
			if p.Tree.Has(p.Component.Path(n)) {
				found = append(found, p.Component.Path(n))
			}
		}
	}
	if len(found) == 0 {
		return "the path of the file that starts the component, seen from where the command runs"
	}
	rel := found[0]
	if d := s.Final.Dir; d != "" {
		rel = strings.TrimPrefix(rel, d+"/")
	}
	if python && s.Target != nil && s.Target.Kind == command.CallableTarget {
		if !has {
			callable = "app"
		}
		return strings.ReplaceAll(strings.TrimSuffix(rel, ".py"), "/", ".") + ":" + callable
	}
	return rel
}

var importMissing = &rules.Rule{
	ID: "start/import-missing", Level: rules.Blocker, Title: "code that starts imports a file that is nowhere", Doc: doc("import-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			seen := map[string]bool{}
			for _, i := range on.Code.Imports {
				if !i.Missing || i.TypeOnly || i.Optional || seen[i.Module+i.From] || strings.ContainsAny(i.Module, "*") {
					continue
				}
				seen[i.Module+i.From] = true
				p.Report(on, 0, rules.Finding{Where: i.At, Message: fmt.Sprintf("imports %s, and there is no such file seen from %s", i.Module, i.From), Remedy: "the path of the file that is meant, or the file itself"})
			}
		}
	},
}

var callableMissing = &rules.Rule{
	ID: "start/callable-missing", Level: rules.Blocker, Title: "the module does not define the object to start", Doc: doc("callable-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Target == nil {
				continue
			}
			s, t := on.Start, on.Start.Target
			if t.Kind != command.CallableTarget || t.File == "" || t.Callable == "" || s.Final.Known != nil && s.Final.Known.Name == "flask" {
				continue
			}
			f := s.Program.Loader.File(t.File)
			if f == nil || defines(s, f, t.Callable) {
				continue
			}
			at := t.At
			msg := fmt.Sprintf("%s does not define %s", t.File, t.Callable)
			if !strings.Contains(t.Named, ":") {
				msg = fmt.Sprintf("%s gives no name, so %s looks for %s, and %s does not define it", t.Named, s.Final.Program, t.Callable, t.File)
			}
			remedy := "NAME in " + t.Module + ":NAME"
			if n := object(s, f); n != "" {
				remedy = t.Module + ":" + n
				msg += fmt.Sprintf("; it does define %s", strings.TrimSuffix(n, "()"))
			}
			p.Report(on, 0, rules.Finding{Where: at, Trail: s.Final.Steps, Message: msg, Remedy: remedy})
		}
	},
}

// defines reports whether a module has the object, also by attributes
// (application.app) and by names made in ways that are not followed.
func defines(s *fact.Start, f *code.File, callable string) bool {
	name, _, _ := strings.Cut(callable, ".")
	if len(f.Top.Names[name]) > 0 {
		return true
	}
	if s.Program.Name(f, name) != nil {
		return true
	}
	for _, star := range f.Stars { // from a package that is not read
		if _, ok := s.Program.Loader.Resolve(f, star.Name, ""); !ok {
			return true
		}
	}
	src := string(f.Src)
	if strings.Contains(src, "globals()") || strings.Contains(src, "__getattr__") || strings.Contains(src, "setattr(") {
		return true
	}
	// A submodule can be an attribute of its package.
	if strings.HasSuffix(f.Name, "/__init__.py") {
		if _, ok := s.Program.Loader.Resolve(f, "."+name, ""); ok {
			return strings.Contains(callable, ".")
		}
	}
	return false
}

// applications are what frameworks' constructors give.
var applications = map[string]bool{"flask.Flask()": true, "fastapi.FastAPI()": true, "starlette.applications.Starlette()": true, "quart.Quart()": true, "django.core.wsgi.get_wsgi_application()": true, "django.core.asgi.get_asgi_application()": true,
	"aiohttp.web.Application()": true, "bottle.Bottle()": true, "falcon.App()": true, "sanic.Sanic()": true, "litestar.Litestar()": true, "falcon.asgi.App()": true, "connexion.FlaskApp()": true}

// object finds the application object, or the factory, that a module has.
func object(s *fact.Start, f *code.File) string {
	var names []string
	for n := range f.Top.Names {
		names = append(names, n)
	}
	slices.Sort(names)
	for _, n := range names {
		if v := s.Program.Name(f, n); v != nil && v.Kind == value.External && applications[v.Text] {
			return n
		}
	}
	for _, n := range names {
		if strings.HasPrefix(n, "create_app") || strings.HasPrefix(n, "make_app") || strings.HasPrefix(n, "get_app") || n == "application" || n == "app" {
			if b := f.Top.Names[n]; b[0].Kind == "func" && (n != "application" && n != "app") {
				return n + "()"
			}
			return n
		}
	}
	return ""
}

var programUndeclared = &rules.Rule{
	ID: "start/program-undeclared", Level: rules.Blocker, Title: "the program comes from a package that is not declared", Doc: doc("program-undeclared"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if !c.Complete || len(c.Manifests) == 0 {
			return
		}
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			f := on.Start.Final
			type via struct {
				name string
				at   place.Span
				pkgs []string
			}
			var list []via
			if f.Known != nil {
				list = append(list, via{f.Program, f.At, f.Known.Packages})
			}
			for _, w := range f.Wrapped {
				if w.Name != f.Program {
					list = append(list, via{w.Name, w.At, node.ProgramPackages(w.Name)})
				}
			}
			for _, v := range list {
				if len(v.pkgs) == 0 || throughNpx(f, v.name) {
					continue
				}
				if declares(c, v.pkgs) || containerInstalls(on, v.pkgs) {
					continue
				}
				p.Report(on, 0, rules.Finding{Where: v.at, Trail: f.Steps, Message: fmt.Sprintf("runs %s, which comes from the package %s; %s does not declare it, so the host does not have it", v.name, v.pkgs[0], c.Manifests[0].File), Remedy: fmt.Sprintf("declare %s in %s", v.pkgs[0], c.Manifests[0].File)})
			}
		}
	},
}

// throughNpx tells programs that npx fetches when they are not there.
func throughNpx(f command.Final, _ string) bool {
	for _, w := range f.Wrapped {
		if w.Name == "npx" || w.Name == "bunx" {
			return true
		}
	}
	return f.Fetched
}

func declares(c *fact.Component, pkgs []string) bool {
	for _, pkg := range pkgs {
		if _, ok := c.Dep(pkg); ok || c.Locked[pkg] {
			return true
		}
		for _, d := range c.Dependencies { // uvicorn comes with fastapi[standard]
			if pkg == "uvicorn" && (d.Name == "fastapi[standard]" || d.Name == "fastapi[all]" || d.Name == "fastapi-cli") || pkg == "fastapi-cli" && d.Name == "fastapi[standard]" {
				return true
			}
		}
	}
	return false
}

func containerInstalls(on *rules.On, pkgs []string) bool {
	if on.Host.Route != "image" || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil {
		return false
	}
	for _, r := range on.Start.Descriptor.Image.Runs {
		for _, w := range strings.FieldsFunc(r.Text, func(r rune) bool { return strings.ContainsRune(" \t\n\"';&[]=<>~@", r) }) {
			if slices.Contains(pkgs, strings.ToLower(w)) {
				return true
			}
		}
	}
	return false
}

var disagree = &rules.Rule{
	ID: "start/disagree", Level: rules.Risk, Title: "two descriptors start different things", Doc: doc("disagree"),
	Check: func(p *rules.Pass) {
		type way struct {
			s    *fact.Start
			goal string
			rank int
		}
		var ways []way
		for _, s := range p.Component.Starts {
			if s.Process != "web" || s.Source == "usual entry" || s.Source == "start script" || s.Final.Reason != "" || s.Final.Missing != nil {
				continue
			}
			g := goal(s)
			if g == "" {
				continue
			}
			ways = append(ways, way{s, g, map[string]int{"package script": 1, "process file": 2, "container": 3}[s.Source]})
		}
		if len(ways) < 2 {
			return
		}
		count := map[string]int{}
		for _, w := range ways {
			count[w.goal]++
		}
		if len(count) == 1 {
			return
		}
		odd := ways[0]
		for _, w := range ways {
			if len(ways) > 2 && len(count) == 2 {
				if count[w.goal] == 1 {
					odd = w
				}
			} else if w.rank > odd.rank {
				odd = w
			}
		}
		f := rules.Finding{Where: at(odd.s), Message: fmt.Sprintf("the %s starts %s", odd.s.Source, show(odd.s))}
		for _, w := range ways {
			if w.s != odd.s {
				f.Trail = append(f.Trail, rules.Step(at(w.s), fmt.Sprintf("the %s starts %s", w.s.Source, show(w.s))))
				if w.goal != odd.goal && f.Remedy == "" {
					f.Remedy = w.s.Command
					f.Message += fmt.Sprintf(", the %s %s", w.s.Source, show(w.s))
				}
			}
		}
		f.Message += ": what runs depends on the host"
		p.ReportAll(0, f)
	},
}

// goal is what a start comes to, for comparing: the file, whatever the
// program that loads it.
func goal(s *fact.Start) string {
	if s.Target != nil {
		if s.Target.Sourced != "" {
			return s.Target.Sourced
		}
		if s.Target.File != "" {
			if path.Base(s.Target.File) == "manage.py" && s.Config != nil {
				return "django"
			}
			if s.Config != nil && (strings.HasSuffix(s.Target.File, "wsgi.py") || strings.HasSuffix(s.Target.File, "asgi.py")) {
				return "django"
			}
			return s.Target.File
		}
		return "" // start/target-missing
	}
	if s.Final.Known != nil && s.Final.Known.Target == command.NoTarget {
		return s.Final.Program
	}
	return ""
}

func show(s *fact.Start) string {
	if s.Target != nil && s.Target.Sourced == "" {
		return s.Target.File
	}
	if s.Target != nil {
		return s.Target.Named
	}
	return s.Final.Program
}

func at(s *fact.Start) place.Span {
	if s.Target != nil && s.Target.At.Line > 0 {
		return s.Target.At
	}
	return s.At
}
