package survey

import (
	"path"
	"slices"
	"strings"
	"unicode"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/trace"
	"ubique/core/value"
)

// Beginning is a way to start a component before it is followed.
type Beginning struct {
	Process, Command, Source, File string
	At                             place.Span
	Line                           command.Line
	Dir                            string
	InImage                        func(string) (string, bool)
	Env                            map[string]string // set by the descriptor
	EnvValues                      map[string]*value.Value
	Descriptor                     *fact.Descriptor
	Err                            error
	// Final is the program, where it is known without following the command; nil: it is not.
	Final *command.Final
}

// Starter follows the starts of one component.
type Starter struct {
	Tree    *source.Tree
	C       *fact.Component
	Runtime Runtime
	Cache   *Cache
	Scripts func(dir, name string) (command.Script, bool)
	// Workspace is the folder of a package of the tree, by its name.
	Workspace func(name string) (dir string, ok bool)
	// With is the environment that was asked for; nil: none.
	With map[string]string

	nested int // how many programs started the one that is looked at
}

// Start follows a beginning to the program, the file it loads, and the facts
// of the code that it reaches.
func (s *Starter) Start(b Beginning) *fact.Start {
	st := &fact.Start{Process: b.Process, Command: b.Command, Source: b.Source, File: b.File, At: b.At, Env: map[string]string{}, Descriptor: b.Descriptor, Parse: b.Err}
	for k, v := range b.Env {
		st.Env[k] = v
	}
	if b.Err != nil {
		st.Final.Reason = "the command could not be read: " + b.Err.Error()
		return st
	}
	ctx := command.Context{Tree: s.Tree, Dir: b.Dir, Scripts: s.Scripts, InImage: b.InImage, Workspace: s.Workspace}
	if s.With != nil {
		env := value.Environ{Set: s.With}.With(st.Env)
		ctx.With = &env
	}
	if b.Final != nil {
		st.Final = *b.Final
	} else {
		st.Final = command.Follow(b.Line, ctx)
	}
	s.managed(st, ctx)
	for _, a := range st.Final.Env {
		switch {
		case a.Gone && a.Name == "":
			clear(st.Env)
		case a.Gone:
			delete(st.Env, a.Name)
		case a.Value != nil && a.Value.Kind == value.Str:
			st.Env[a.Name] = a.Value.Text
		}
	}
	dir := st.Final.Dir
	if w, ok, _ := st.Final.Flag("--chdir", "--app-dir"); ok && w.Literal() {
		if p, ok := st.Final.Locate(w.Text, ctx); ok {
			dir = p
		}
	}
	modules := s.Runtime.Modules(s.Tree, s.C, dir)
	prog := NewProgram(s.Tree, modules, s.Cache)
	if w, args, ok := st.Final.Inline(); ok && w.At.File != "" {
		st.Target = &fact.Target{Named: w.Text, File: prog.Inline(st.Final.Known.Name, w.Text, w.At), At: w.At, Kind: command.FileTarget, Args: args}
	} else {
		s.target(st, ctx, prog, dir)
	}
	main := ""
	if st.Target != nil && st.Target.File != "" && st.Target.Kind == command.FileTarget {
		main = st.Target.File
		if st.Target.Sourced != "" {
			main = st.Target.Sourced
		}
	}
	st.Program = value.New(prog, main)
	st.Program.Dir = st.Final.Dir
	if m, ok := modules.(Searching); ok {
		m.Search(searched(st, prog))
	}
	st.Program.Packaged = st.Final.Holds != nil
	if len(st.Final.Flags("-r", "--require", "--import", "--loader", "--experimental-loader")) == 0 {
		st.Program.By = st.Final.Program
	}
	if target, ok := st.Final.Target(); ok && main != "" && len(st.Target.Args) == 0 {
		past := false
		words := st.Final.Free()
		if st.Final.Program == "php" || st.Final.Via != "" && st.Final.Known == nil { // what follows the file or the module is for it
			words = st.Final.Args
		}
		for _, w := range words {
			if past {
				pass(st.Program, w)
			}
			past = past || w.At == target.At
		}
	}
	if st.Final.Program == "java" {
		st.Program.Properties = systemProperties(st)
		st.Program.Args, st.Program.Quoted = nil, nil
		past := st.Target != nil && len(st.Target.Args) > 0
		for i, w := range st.Final.Args { // one that runs a file of source
			if !past && strings.HasSuffix(w.Text, ".java") && main != "" {
				for _, w := range st.Final.Args[i+1:] {
					pass(st.Program, w)
				}
				past = true
			}
		}
	}
	if st.Target != nil {
		for _, w := range st.Target.Args {
			pass(st.Program, w)
		}
	}
	files := s.reach(st, prog)
	live := Live(files)
	st.Listeners = ServerListeners(st.Final, st.Process)
	if _, laravel := s.C.Dep("laravel/framework"); !laravel && len(st.Listeners) == 1 && st.Listeners[0].Server == "artisan serve" {
		st.Listeners = nil // a program of that name, and no command of Laravel
	}
	if s.isManage(st) {
		if index(st.Final.Args, "runserver") >= 0 {
			st.Listeners = []*fact.Listener{runserver(st)}
		}
	}
	if len(st.Listeners) > 0 && st.Listeners[0].Server == "gunicorn" {
		if st.Server = s.gunicornFile(st, ctx); st.Server != "" {
			prog.File(st.Server)
		} else if w, ok, _ := st.Final.Flag("-c", "--config"); ok && (!w.Literal() || path.IsAbs(w.Text) && ctx.InImage == nil) && st.Listeners[0].Via == "default" { // a file that is not of the tree
			st.Listeners[0].Bind = value.NotKnown("the settings in "+w.Text, w.At)
			s.gunicornChosen(st, prog, ctx, w)
		}
	}
	if len(st.Listeners) == 1 && st.Listeners[0].Server == "gunicorn" && st.Listeners[0].Via == "default" {
		s.gunicornConfig(st, prog)
	}
	if len(st.Listeners) > 0 && st.Listeners[0].Server == "gunicorn" && st.Server != "" {
		s.gunicornEnds(st, prog)
	}
	if len(st.Listeners) == 1 && st.Listeners[0].Via == "default" && rubyConfigs[st.Listeners[0].Server].bind != "" {
		s.rubyConfig(st, prog)
	}
	if st.Final.Known != nil && st.Final.Known.Name == "uwsgi" {
		s.uwsgiConfig(st, prog)
	}
	if len(st.Listeners) == 1 && st.Listeners[0].Server == "thin" {
		s.thinConfig(st, prog)
	}
	s.rackOptions(st)
	if len(st.Listeners) == 1 && st.Listeners[0].Server == "hypercorn" && st.Listeners[0].Via == "default" {
		s.hypercornConfig(st, prog)
	}
	if len(st.Listeners) == 1 && (st.Listeners[0].Server == "vite" || st.Listeners[0].Server == "vite preview") {
		s.viteConfig(st, prog)
	}
	if len(st.Listeners) == 1 && st.Listeners[0].Server == "astro preview" {
		st.Listeners[0] = s.astroConfig(st.Listeners[0], st)
	}
	if len(st.Listeners) == 1 && st.Listeners[0].Server == "rails" && st.Listeners[0].Port == nil && !st.Listeners[0].Missing {
		s.railsPort(st, prog)
	}
	if len(st.Listeners) == 0 && (st.Final.Known == nil || st.Final.Known.Server == "" || st.Final.Known.Name == "php") {
		st.Listeners = Listeners(st.Program, files, st.Process, live)
	}
	if l := httpdOfRuby(st); l != nil {
		st.Listeners = []*fact.Listener{l}
	}
	if len(st.Listeners) == 0 && st.Final.Program == "ruby" && usesSinatra(files) {
		if l := sinatra(st.Program, files, st.Process); l != nil {
			st.Listeners = []*fact.Listener{l}
		}
	}
	if len(st.Listeners) == 0 {
		st.Listeners = imageListeners(s.Tree, st)
	}
	if len(st.Listeners) == 0 && s.C.Runtime == "node" {
		if l := s.kitServer(st); l != nil {
			st.Listeners = []*fact.Listener{l}
		}
	}
	if len(st.Listeners) == 0 && s.C.Runtime == "dotnet" {
		st.Listeners = dotnetListeners(st.Program, files, st, live)
	}
	if len(st.Listeners) == 0 && s.C.Runtime == "elixir" {
		st.Program.Released = st.Final.Program != "mix" && st.Final.Program != "elixir"
		st.Listeners = elixirListeners(st.Program, files, st)
	}
	if len(st.Listeners) == 0 && s.C.Runtime == "rust" {
		if l := rocket(st.Program, prog, st, files); l != nil {
			l.Process = st.Process
			st.Listeners = []*fact.Listener{l}
		}
	}
	if len(st.Listeners) == 0 && len(files) > 0 {
		if l := exported(st.Program, files[0], st.Final, st.Process); l != nil {
			st.Listeners = []*fact.Listener{l}
		}
	}
	if r, ok := s.Runtime.(Listening); ok && len(st.Listeners) == 0 && st.Final.Reason == "" {
		st.Listeners = r.Listeners(s.Tree, s.C, st)
	}
	sandboxed(st)
	s.confine(st)
	if st.Final.Either {
		for _, l := range st.Listeners {
			l.Guards, l.Ends = append(l.Guards, value.NotKnown(st.Final.Reason, l.At)), append(l.Ends, false)
		}
	}
	st.Variables = Variables(st.Program, files)
	st.Variables = append(st.Variables, heard(st.Listeners, st.Variables)...)
	for _, n := range st.Final.Needs {
		st.Variables = append(st.Variables, fact.Variable{Name: n.Name, Required: true, At: n.At})
	}
	s.bind(st, b)
	s.follow(st, b)
	s.loads(st, b)
	for _, l := range st.Listeners {
		if st.Final.Ends != "" {
			l.Ended = st.Final.Ends
		}
		l.Caught = st.Final.Else
	}
	s.settings(st, prog, files)
	warns := map[place.Span]bool{}
	for _, f := range files {
		for _, imp := range f.Imports {
			for _, i := range prog.m.Classify(f, imp.Node) {
				i.TypeOnly = i.TypeOnly || typeChecking(imp)
				i.Optional = imp.InTry
				for _, g := range imp.Guards {
					if o := st.Program.Guard(g).Under(value.Environ{Open: true}); o.Known() {
						if yes, ok := o.Truth(false); ok && !yes {
							i.TypeOnly = true // never runs here
						}
					} else {
						i.Optional = true
					}
				}
				st.Imports = append(st.Imports, i)
				if off := int(imp.Node.Off); f.Lang == code.PHP && off <= len(f.Src) && strings.Contains(string(f.Src[max(0, off-12):off]), "@include") { // it does not even do that
					st.Imports[len(st.Imports)-1].Optional = true
				}
				if off := int(imp.Node.Off); f.Lang == code.PHP && off <= len(f.Src) && strings.Contains(string(f.Src[max(0, off-12):off]), "include") { // it only warns
					warns[i.At] = true
				}
			}
		}
	}
	s.fold(st, dir)
	if s.With != nil {
		for _, i := range st.Imports {
			if !i.Missing || i.Case != "" || i.TypeOnly || i.Optional || strings.ContainsAny(i.Module, "*") || warns[i.At] {
				continue
			}
			for _, l := range st.Listeners {
				if l.Ended == "" {
					l.Ended = "it imports " + i.Module + ", and there is no such file"
				}
			}
		}
	}
	st.Personal = personal(st, prog, files)
	_, dotenv := s.C.Dep("python-dotenv")
	st.Dotenv = dotenvFiles(st, files, dotenv)
	if k := st.Final.Known; k != nil && k.Server == "flask run" && !dotenv && len(s.C.Manifests) == 0 {
		for _, name := range []string{".flaskenv", ".env"} {
			if p, ok := source.Join(st.Final.Dir, name); ok && s.Tree.Has(p) {
				for _, l := range st.Listeners {
					l.Doubt = "whether python-dotenv is installed, which reads " + p
				}
				break
			}
		}
	}
	st.Secrets = effective(st, Secrets(st.Program, files))
	if b.Final == nil {
		s.beside(st, b)
	}
	return st
}

// sandboxed looks at what the command line of Deno and Bun says of the servers
// that the code starts: Deno without the right to the network ends at the call
// that listens; --port of Bun stands in where neither the code nor a variable
// gives one (measured with Deno 2.9 and Bun 1.4, 2026-11).
func sandboxed(st *fact.Start) {
	if st.Final.Program == "bun" {
		w, ok, _ := st.Final.Flag("--port")
		if index(st.Final.Args, "run") > 0 && ok && slices.ContainsFunc(st.Final.Args[:index(st.Final.Args, "run")], func(w command.Word) bool { return w.Text == "--port" }) {
			for _, l := range st.Listeners {
				l.Doubt = "what Bun makes of --port before run"
			}
		}
		if p, inTree := source.Join(st.Final.Dir, "bunfig.toml"); inTree && (!ok || index(st.Final.Args, "run") >= 0) { // behind run it beats the flag
			if n := st.Program.Loader.Data(p).Get("serve", "port"); n != nil {
				w, ok = command.Word{Value: value.FromDocument(n), At: n.At()}, true
			}
		}
		for _, l := range st.Listeners {
			if ok && w.Value != nil && l.Server == "bun" && (l.Port == nil || l.Port.Kind == value.Undef || l.Port.Kind == value.Null) {
				l.Spare, l.PortAt = w.Value, w.At
			}
		}
	}
	if st.Final.Program != "deno" {
		return
	}
	run, serve := false, false
	for _, w := range st.Final.Args {
		switch name, _, _ := strings.Cut(w.Text, "="); {
		case w.Text == "run":
			run = true
		case w.Text == "serve":
			serve = true
		case name == "--allow-net" || name == "--allow-all" || name == "-A" || name == "-N" || name == "-P" || name == "--permission-set":
			return
		case len(name) > 2 && name[0] == '-' && name[1] != '-' && strings.ContainsAny(name, "NA"): // several letters in one
			return
		}
	}
	for _, l := range st.Listeners {
		if serve { // it may listen where its own flags say, and nowhere else
			set := value.EnvOr("DENO_SERVE_ADDRESS", nil, l.At)
			l.Guards, l.Ends = append(l.Guards, &value.Value{Kind: value.Op, Text: "!", Kids: []*value.Value{set}, At: l.At}), append(l.Ends, true)
		}
		if !run {
			continue
		}
		l.Guards, l.Ends = append(l.Guards, value.No(l.At)), append(l.Ends, true)
	}
}

// effective leaves out secrets of a settings module that the module in use
// puts another value in the place of.
func effective(st *fact.Start, list []fact.Secret) []fact.Secret {
	for _, s := range st.Settings {
		if s.Framework != "Django" || s.Name != "SECRET_KEY" {
			continue
		}
		used := map[place.Span]bool{}
		for _, l := range literals(s.Value, false, 0) {
			used[l.v.At] = true
		}
		var kept []fact.Secret
		for _, x := range list {
			if x.Name != s.Name || used[x.At] {
				kept = append(kept, x)
			}
		}
		return kept
	}
	return list
}

func typeChecking(s code.Site) bool {
	for _, g := range s.Guards {
		if d := g.Test.Dotted(); !g.Not && (d == "TYPE_CHECKING" || d == "typing.TYPE_CHECKING") {
			return true
		}
	}
	return false
}

// bind puts the values of variables that the command itself sets in the place
// of those variables.
func (s *Starter) bind(st *fact.Start, b Beginning) {
	set, outer := map[string]*value.Value{}, map[string]*value.Value{}
	gone, cleared := map[string]bool{}, false
	for _, a := range st.Final.Env {
		switch {
		case a.Gone && a.Name == "":
			set, gone, cleared = map[string]*value.Value{}, map[string]bool{}, true
		case a.Gone:
			gone[a.Name] = true
			delete(set, a.Name)
		default:
			set[a.Name] = a.Value
			delete(gone, a.Name)
		}
	}
	missing := func(name string) bool { return gone[name] || cleared && set[name] == nil }
	less := cleared || len(gone) > 0
	said := set // what stands in place of a variable: not what is made of others that are taken out
	if less {
		said = map[string]*value.Value{}
		for name, v := range set {
			if v == nil || v.Kind == value.Str {
				said[name] = v
			}
		}
	}
	for _, a := range st.Final.Outer {
		outer[a.Name] = a.Value
	}
	for _, l := range st.Listeners {
		for _, p := range []**value.Value{&l.Host, &l.Port, &l.Bind} {
			if l.Via == "flag" { // the shell put the variables in before it set these
				*p = (*p).Substitute(outer).Fallbacks(b.EnvValues)
				continue
			}
			*p = (*p).Substitute(said)
			if less {
				*p = (*p).Without(missing)
			}
			*p = (*p).Fallbacks(b.EnvValues)
		}
		for _, a := range st.Final.Env {
			if a.Gone && l.Via != "flag" {
				l.Commanded = append(l.Commanded, fact.Assigned{Name: a.Name})
			}
			if a.Value != nil && a.Value.Kind != value.Str && (less || !mentions(l, a.Name)) {
				l.Commanded = append(l.Commanded, fact.Assigned{Name: a.Name, Value: a.Value})
			}
		}
		// A variable of the server's own that the command sets from another.
		for name := range strings.FieldsSeq(fact.Servers[l.Server].PortEnv) {
			if v := set[name]; v != nil && l.Port == nil && l.Bind == nil {
				l.PortAt = v.At
			}
		}
		for name := range strings.FieldsSeq(fact.Servers[l.Server].HostEnv) {
			if v := set[name]; v != nil && l.Host == nil && l.Bind == nil {
				l.HostAt = v.At
			}
		}
	}
}

// mentions reports whether what a listener is given depends on a variable.
func mentions(l *fact.Listener, name string) bool {
	return slices.ContainsFunc([]*value.Value{l.Host, l.Port, l.Bind}, func(v *value.Value) bool {
		return v != nil && slices.ContainsFunc(v.Variables(), func(x *value.Value) bool { return x.Text == name })
	})
}

func index(words []command.Word, text string) int {
	for i, w := range words {
		if w.Text == text {
			return i
		}
	}
	return -1
}

func (s *Starter) isManage(st *fact.Start) bool {
	return st.Target != nil && path.Base(st.Target.File) == "manage.py"
}

// target finds what the program is given to load.
func (s *Starter) target(st *fact.Start, ctx command.Context, prog *Program, dir string) {
	f := st.Final
	if tr, ok := s.Runtime.(Targeter); ok && f.Reason == "" {
		if t, reason, ok := tr.Target(s.Tree, s.C, f); ok {
			if t != nil && t.Folder && prepared(st, t.Named) {
				t = nil
			}
			st.Target, st.Final.Reason = t, reason
			st.Final.Missing = nil
			return
		}
	}
	if m := f.Missing; m != nil && m.Kind == "file" && s.built(f, m.Name) {
		st.Target = &fact.Target{Named: m.Name, At: m.At, Kind: command.FileTarget, Built: true, File: join(f.Dir, m.Name)}
		st.Final.Missing = nil
		return
	}
	if f.Missing != nil || f.Reason != "" {
		return
	}
	free := f.Free()
	kind := command.NoTarget
	if f.Known != nil {
		kind = f.Known.Target
	}
	if f.Known != nil && f.Known.Name == "flask" {
		s.flaskApp(st, prog, dir)
		return
	}
	if f.Via != "" && f.Known == nil && len(f.Args) > 0 { // python -m package
		w := f.Args[0]
		t := &fact.Target{Named: w.Text, Module: w.Text, At: w.At, Kind: command.FileTarget}
		at := &code.File{Name: join(dir, "__main__.py"), Lang: code.Python}
		if file, ok := prog.Resolve(at, w.Text+".__main__", ""); ok {
			t.File = file
		} else if file, ok := prog.Resolve(at, w.Text, ""); ok && strings.HasSuffix(file, ".py") {
			t.File = file
		} else if top, _, _ := strings.Cut(w.Text, "."); len(prog.m.Classify(at, &code.Node{Kind: code.Import, Name: top})) > 0 && !prog.m.Classify(at, &code.Node{Kind: code.Import, Name: top})[0].Standard && prog.m.Classify(at, &code.Node{Kind: code.Import, Name: top})[0].Package != "" {
			st.Final.Reason = "the module " + w.Text + " comes from a package"
			return
		}
		st.Target = t
		return
	}
	if kind == command.NoTarget || len(free) == 0 {
		if kind == command.FileTarget && f.Known.Name == "nodemon" {
			// nodemon without a file runs the manifest's main.
			free = nil
		}
		return
	}
	if f.Known.Name == "nest" {
		// The command line of Nest compiles and runs src/main (its
		// documentation, "CLI command reference", start).
		if main := s.C.Path("src/main.ts"); free[0].Text == "start" && s.Tree.Has(main) {
			st.Target = &fact.Target{Named: "src/main.ts", File: main, At: free[0].At, Kind: command.FileTarget}
		}
		return
	}
	w, given := f.Target()
	if f.Known.Name == "fastapi" {
		if !given {
			for _, n := range []string{"main.py", "app.py", "api.py", "app/main.py", "app/app.py", "app/api.py"} {
				if s.Tree.Has(join(dir, n)) {
					st.Target = &fact.Target{Named: n, File: join(dir, n), At: free[0].At, Kind: command.CallableTarget, Callable: ""}
					return
				}
			}
			return
		}
	}
	if !given {
		return
	}
	if ctx.With != nil && !w.Literal() && w.Value != nil { // the environment that was asked for decides
		if o := w.Value.Under(commanded(st, Beginning{}, *ctx.With)); o.Kind == value.Str && o.Text != "" {
			w.Text, w.Value = o.Text, value.Text(o.Text, w.At)
		}
	}
	t := &fact.Target{Named: w.Text, At: w.At, Kind: kind}
	st.Target = t
	if !w.Literal() {
		st.Target = nil
		st.Final.Reason = "what is started is named by " + w.Text
		return
	}
	switch kind {
	case command.FileTarget:
		if (f.Known.Name == "pm2" || f.Known.Name == "pm2-runtime") && (strings.HasSuffix(w.Text, ".json") || strings.Contains(w.Text, ".config.") || w.Text == "npm") {
			st.Target = nil
			st.Final.Reason = "started through the settings of " + f.Known.Name
			return
		}
		p, ok := st.Final.Locate(w.Text, ctx)
		if !ok {
			st.Target = nil
			st.Final.Reason = w.Text + " lies outside the tree"
			return
		}
		node := f.Known.Runtime != "python"
		if top := (&code.File{Name: "index.js", Lang: code.JavaScript}); node && !s.Tree.Has(p) && s.Tree.Has(join(p, "package.json")) { // node FOLDER starts what its manifest names
			t.File, _ = prog.Resolve(top, "./"+p, "")
		}
		if t.File == "" {
			t.File = s.file(p, node)
		}
		if made := s.makes(p); t.File == "" && made != "" {
			t.File, t.Module, t.Built = made, p, true
			return
		}
		if t.File == "" {
			t.Sourced, t.Built = s.sourceOf(p)
			if t.Sourced == "" && earlierStage(st.Descriptor) {
				st.Target = nil
				st.Final.Reason = w.Text + " is made in an earlier stage of the image"
				return
			}
			if t.Built {
				t.File = p
			}
			t.Module = p
		} else if src, built := s.sourceOf(t.File); built && s.Tree.State(t.File) != source.Shipped {
			t.Sourced, t.Built = src, true
		}
	case command.FolderTarget: // its files are served
		p, ok := st.Final.Locate(w.Text, ctx)
		switch {
		case !ok:
		case s.Tree.HasDir(p) || s.Tree.Has(p) || p == "":
			st.Target = nil
		case slices.ContainsFunc(s.C.Artefacts, func(a fact.Artefact) bool { return a.Path == p || strings.HasPrefix(p, a.Path+"/") }):
			t.File, t.Module, t.Built = p, p, true
		}
	case command.CallableTarget:
		spec := w.Text
		t.Kind = command.CallableTarget
		t.Module, t.Callable, _ = strings.Cut(spec, ":")
		if i := strings.IndexByte(t.Callable, '('); i >= 0 {
			t.Callable, t.Factory = t.Callable[:i], true
		}
		if _, ok, _ := f.Flag("--factory", "--call"); ok || index(f.Args, "--factory") >= 0 || index(f.Args, "--call") >= 0 {
			t.Factory = true
		}
		if t.Callable == "" && (f.Known.Name == "gunicorn" || f.Known.Name == "waitress-serve") {
			t.Callable = "application"
		}
		at := &code.File{Name: join(dir, "__main__.py"), Lang: code.Python}
		if file, ok := prog.Resolve(at, strings.TrimSuffix(t.Module, ".py"), ""); ok && strings.HasSuffix(file, ".py") && !strings.HasSuffix(t.Module, ".py") {
			t.File = file
		}
	}
}

// makes gives the server among what the build makes that a path names: itself,
// or the folder it is the index of.
func (s *Starter) makes(p string) string {
	for _, a := range s.C.Artefacts {
		if a.Kind == "server" && (a.Path == p || a.Path == p+"/index.js" || a.Path == p+"/index.mjs" || a.Path == p+".js") {
			return a.Path
		}
	}
	return ""
}

// kitServers are the servers that builds of frameworks make: what is declared,
// how the path ends, a key of the servers' table.
var kitServers = []struct{ pkg, path, server string }{
	{"@sveltejs/adapter-node", "index.js", "sveltekit"}, {"", ".output/server/index.mjs", "nitro"}, {"@astrojs/node", "server/entry.mjs", "astro"}, {"next", "standalone/server.js", "next standalone"},
}

// kitServer is the listener of a server that a framework's build makes.
func (s *Starter) kitServer(st *fact.Start) *fact.Listener {
	if free := st.Final.Free(); st.Final.Program == "nuxt" && len(free) > 0 && (free[0].Text == "start" || free[0].Text == "preview") {
		return &fact.Listener{Process: st.Process, Server: "nitro", Via: "default", At: st.Final.At, PortAt: st.Final.At, HostAt: st.Final.At}
	}
	if st.Target == nil || st.Target.Sourced != "" || s.Tree.Has(st.Target.File) || st.Final.Program != "node" && st.Final.Program != "bun" {
		return nil
	}
	for _, k := range kitServers {
		_, has := s.C.Dep(k.pkg)
		if (has || k.pkg == "") && strings.HasSuffix(st.Target.File, k.path) {
			at := st.Target.At
			l := &fact.Listener{Process: st.Process, Server: k.server, Via: "default", At: at, PortAt: at, HostAt: at}
			switch k.server {
			case "sveltekit":
				s.prefixed(l, st)
			case "astro":
				return s.astroConfig(l, st)
			}
			return l
		}
	}
	return nil
}

// prefixed looks for the prefix that the adapter of SvelteKit puts before the
// names of its variables (documentation of @sveltejs/adapter-node 5,
// "envPrefix").
func (s *Starter) prefixed(l *fact.Listener, st *fact.Start) {
	prog := NewProgram(s.Tree, s.Runtime.Modules(s.Tree, s.C, st.Final.Dir), s.Cache)
	for _, name := range []string{"svelte.config.js", "svelte.config.mjs", "svelte.config.ts"} {
		f := prog.File(s.C.Path(name))
		if f == nil {
			continue
		}
		adapter := value.New(prog, f.Name).Whole(f).Get("kit").Get("adapter")
		if adapter == nil || adapter.Kind != value.External || !strings.HasPrefix(adapter.Text, "@sveltejs/adapter-node") || len(adapter.Kids) == 0 {
			return
		}
		prefix := adapter.Kids[0].Get("envPrefix")
		if prefix == nil || prefix.Kind == value.Undef || prefix.Kind == value.Str && prefix.Text == "" {
			return
		}
		if prefix.Kind != value.Str {
			l.Port, l.PortAt = value.NotKnown("the prefix of the adapter's variables", prefix.At), prefix.At
			return
		}
		set := func(name string, def *value.Value) *value.Value {
			v := &value.Value{Kind: value.Env, Text: prefix.Text + name, At: prefix.At}
			return &value.Value{Kind: value.Op, Text: "unset", At: prefix.At, Kids: []*value.Value{v, def}}
		}
		port := value.Text("3000", prefix.At)
		l.Port, l.PortAt = set("PORT", port), prefix.At
		l.Host, l.HostAt = set("HOST", value.Text("0.0.0.0", prefix.At)), prefix.At
		l.Socket = &value.Value{Kind: value.Env, Text: prefix.Text + "SOCKET_PATH", At: prefix.At}
		return
	}
}

// astroConfig reads what the settings of Astro say of its servers: of that which its build
// makes for Node.js, of preview, and of that for development; nil where the build makes
// none (Astro 5, "server"; @astrojs/node 9, "mode").
func (s *Starter) astroConfig(l *fact.Listener, st *fact.Start) *fact.Listener {
	names := []string{"astro.config.mjs", "astro.config.js", "astro.config.ts", "astro.config.mts", "astro.config.cjs"}
	if w, ok, _ := st.Final.Flag("--config"); ok && w.Literal() && st.Final.Program == "astro" {
		names = []string{w.Text}
	}
	prog := NewProgram(s.Tree, s.Runtime.Modules(s.Tree, s.C, st.Final.Dir), s.Cache)
	for _, name := range names {
		f := prog.File(s.C.Path(name))
		if f == nil {
			continue
		}
		e := value.New(prog, f.Name)
		all := e.Configured(f, nil)
		if all.Kind != value.Object {
			for _, p := range []**value.Value{&l.Host, &l.Port} {
				if *p == nil {
					*p = value.NotKnown("the settings in "+f.Name, place.Whole(f.Name))
				}
			}
			return l
		}
		if adapter := all.Get("adapter"); l.Server == "astro" && adapter != nil && len(adapter.Kids) > 0 {
			if mode := adapter.Kids[0].Get("mode"); mode != nil && mode.Kind == value.Str && mode.Text == "middleware" {
				return nil
			}
		}
		if l.Server == "astro preview" && all.Get("adapter") == nil { // it is Vite's then, and reads nothing
			l.Server = "astro static"
		}
		given := all.Get("server")
		if given != nil && given.Kind != value.Object && given.Kind != value.Undef {
			for _, p := range []**value.Value{&l.Host, &l.Port} {
				if *p == nil {
					*p = value.NotKnown("the settings of the server in "+f.Name, placeOf(given, l.At))
				}
			}
			return l
		}
		under := func(v *value.Value, op, name string) *value.Value { // a variable beats it
			kids := []*value.Value{{Kind: value.Env, Text: name, At: v.At}, v}
			return &value.Value{Kind: value.Op, Text: op, At: v.At, Kids: kids}
		}
		if v := given.Get("port"); v != nil && l.Port == nil {
			l.Port, l.PortAt, l.Via = v, placeOf(v, l.At), "setting"
			if l.Server == "astro" {
				l.Port = under(v, "||", "PORT")
			}
		}
		if v := given.Get("host"); v != nil && l.Host == nil && !(v.Kind == value.Bool && v.Num == 0) {
			l.HostAt, l.Via = placeOf(v, l.At), "setting"
			if v.Kind == value.Bool {
				v = value.Text("0.0.0.0", v.At)
			}
			if l.Host = v; l.Server != "astro static" {
				l.Host = under(v, "unset", "HOST")
			}
		}
		st.Reached = append(st.Reached, f.Name)
		return l
	}
	if l.Server == "astro preview" {
		l.Server = "astro static"
	}
	return l
}

// outputs are the folders that builds of compiled languages write.
var outputs = []string{"target/", "build/", "_build/", "bin/", "publish/", "out/", "dist/", ".build/"}

// built reports whether a build of the component makes a file: one of its
// artefacts, or something in the folder that builds of its language write.
func (s *Starter) built(f command.Final, name string) bool {
	p, ok := source.Join(f.Dir, name)
	if !ok || len(s.C.Artefacts) == 0 || s.C.Runtime == "node" || s.C.Runtime == "python" {
		return false
	}
	for _, a := range s.C.Artefacts {
		if p == a.Path || strings.HasPrefix(p, a.Path+"/") || path.Base(p) == path.Base(a.Path) {
			return true
		}
	}
	rel := strings.TrimPrefix(strings.TrimPrefix(p, s.C.Dir), "/")
	for _, o := range outputs {
		if strings.HasPrefix(rel, o) {
			return true
		}
	}
	return false
}

// fold looks for the file of a start that is missing under a name whose
// letters have another case.
func (s *Starter) fold(st *fact.Start, dir string) {
	t := st.Target
	if t == nil || t.File != "" || t.Built {
		return
	}
	var names []string
	switch {
	case t.Kind == command.CallableTarget:
		p := join(dir, strings.ReplaceAll(strings.TrimSuffix(t.Module, ".py"), ".", "/"))
		names = []string{p + ".py", p + "/__init__.py"}
	default:
		if p, ok := source.Join(st.Final.Dir, t.Named); ok {
			names = []string{p, p + ".js", p + ".ts", p + ".py", p + "/index.js"}
		}
	}
	for _, n := range names {
		if e, ok := s.Tree.Fold(n); ok {
			t.Case = e.Path
			return
		}
	}
}

// prepared reports whether what runs before a start may make the folder that it
// serves: a command before it names the folder, or the image gets it.
func prepared(st *fact.Start, folder string) bool {
	for _, b := range st.Final.Before {
		for _, a := range b.Args {
			if Names(a.Text, folder) {
				return true
			}
		}
	}
	if st.Descriptor == nil || st.Descriptor.Image == nil {
		return false
	}
	im := st.Descriptor.Image
	return earlierStage(st.Descriptor) || slices.ContainsFunc(im.Copies, func(c fact.Copy) bool { return Names(c.Dest, folder) }) || slices.ContainsFunc(im.Runs, func(r fact.Run) bool { return Names(r.Text, folder) })
}

// Names reports whether a text of commands or paths has the name of a folder as a part.
func Names(text, folder string) bool {
	parts := strings.FieldsFunc(text, func(c rune) bool {
		return !unicode.IsLetter(c) && !unicode.IsDigit(c) && !strings.ContainsRune("._-", c)
	})
	return slices.Contains(parts, path.Base(folder))
}

// earlierStage reports whether an image takes files from one of its stages, so
// that the tree alone does not say what is there.
func earlierStage(d *fact.Descriptor) bool {
	if d == nil || d.Image == nil {
		return false
	}
	for _, c := range d.Image.Copies {
		if c.Final && c.FromStage != "" {
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

// file finds a file the way node does: as named, with an extension, or the
// index of a folder.
func (s *Starter) file(p string, node bool) string {
	names := []string{p, join(p, "__main__.py")} // python FOLDER
	if node {
		names = []string{p, p + ".js", p + ".json", p + "/index.js"}
		if p == "" {
			names = []string{"index.js"}
		}
	}
	for _, n := range names {
		if s.Tree.Has(n) {
			return n
		}
	}
	return ""
}

// sourceOf finds the source that a build output is made of, when the
// component has a build step that makes it.
func (s *Starter) sourceOf(p string) (src string, built bool) {
	_, hasBuild := s.C.Scripts["build"]
	for name, sc := range s.C.Scripts {
		if strings.HasPrefix(name, "pre") || strings.HasPrefix(name, "post") || strings.HasPrefix(name, "build") {
			hasBuild = hasBuild || strings.Contains(sc.Text, "tsc") || strings.Contains(sc.Text, "build") || strings.Contains(sc.Text, "webpack") || strings.Contains(sc.Text, "esbuild")
		}
	}
	if !hasBuild {
		return "", false
	}
	rel := strings.TrimPrefix(p, s.C.Dir+"/")
	out, rootDir := "", ""
	if cfg := s.C.Path("tsconfig.json"); s.Tree.Has(cfg) {
		if f, err := s.Tree.Document(cfg); err == nil {
			if d, err := document.JSON(cfg, f.Data, f.Lines(), true); err == nil {
				out = path.Clean(d.Get("compilerOptions", "outDir").Str())
				rootDir = path.Clean(d.Get("compilerOptions", "rootDir").Str())
			}
		}
	}
	top, rest, ok := strings.Cut(rel, "/")
	if !ok {
		return "", false
	}
	if out != "" && out != "." && strings.HasPrefix(rel, out+"/") {
		rest = strings.TrimPrefix(rel, out+"/")
	} else if top != "dist" && top != "build" && top != "out" && top != "lib" && top != ".output" && top != ".next" {
		return "", false
	}
	stem := strings.TrimSuffix(rest, path.Ext(rest))
	for _, base := range []string{rootDir, "src", "", "server", "source"} {
		for _, ext := range []string{".ts", ".js", ".mts", ".tsx", ".mjs", ".cts"} {
			n := s.C.Path(path.Join(base, stem+ext))
			if n != p && s.Tree.Has(n) {
				return n, true
			}
		}
	}
	return "", true
}

// flaskApp finds the application of `flask run`: --app, FLASK_APP, app.py or
// wsgi.py (Flask documentation, "Command Line Interface").
func (s *Starter) flaskApp(st *fact.Start, prog *Program, dir string) {
	name, at := "", st.Final.At
	if w, ok, _ := st.Final.Flag("--app", "-A"); ok && w.Literal() {
		name, at = w.Text, w.At
	} else if v := st.Env["FLASK_APP"]; v != "" {
		name = v
		for _, a := range st.Final.Env {
			if a.Name == "FLASK_APP" {
				at = a.At
			}
		}
	} else {
		for _, n := range []string{"wsgi.py", "app.py"} {
			if s.Tree.Has(join(dir, n)) {
				name = n
				break
			}
		}
		if name == "" {
			return
		}
	}
	t := &fact.Target{Named: name, At: at, Kind: command.CallableTarget}
	t.Module, t.Callable, _ = strings.Cut(name, ":")
	t.Callable, _, _ = strings.Cut(t.Callable, "(")
	t.Factory = true
	st.Target = t
	module := strings.ReplaceAll(strings.TrimSuffix(t.Module, ".py"), "/", ".")
	if file, ok := prog.Resolve(&code.File{Name: join(dir, "__main__.py"), Lang: code.Python}, module, ""); ok {
		t.File = file
	}
}

const maxReached = 2000

// reach goes from the target through its imports and gives the files that
// run, in the order in which they are met.
func (s *Starter) reach(st *fact.Start, prog *Program) []*code.File {
	var files []*code.File
	seen := map[string]bool{}
	var queue []string
	push := func(name string) {
		if name != "" && !seen[name] && len(seen) < maxReached {
			seen[name] = true
			queue = append(queue, name)
		}
	}
	if st.Target != nil {
		if st.Target.Sourced != "" {
			push(st.Target.Sourced)
		} else {
			push(st.Target.File)
		}
		if st.Target.Kind == command.CallableTarget {
			for d := source.Dir(st.Target.File); d != "" && s.Tree.Has(d+"/__init__.py"); d = source.Dir(d) {
				push(d + "/__init__.py")
			}
		}
	}
	if comp, ok := s.Runtime.(Compiler); ok && (st.Target != nil || st.Final.Known != nil) {
		for _, p := range comp.Sources(s.Tree, s.C) {
			push(p)
		}
	}
	// Configuration that the server itself loads when it starts.
	if k := st.Final.Known; k != nil && k.Name == "next" {
		for _, n := range []string{"next.config.js", "next.config.mjs", "next.config.ts", "next.config.cjs"} {
			if free := st.Final.Free(); len(free) > 0 && free[0].Text == "start" && s.Tree.Has(join(st.Final.Dir, n)) {
				push(join(st.Final.Dir, n))
			}
		}
	}
	for _, w := range st.Final.Flags("-r", "--require", "--import") {
		p, ok := source.Join(st.Final.Dir, w.Text)
		if !ok || !strings.HasPrefix(w.Text, ".") {
			continue
		}
		if s.C.Runtime == "ruby" && s.Tree.Has(p+".rb") {
			p += ".rb"
		} else {
			p = s.file(p, true)
		}
		push(p)
		if st.Target != nil && w.At.Before(st.Target.At) {
			st.Program.Before = append(st.Program.Before, p)
		}
	}
	if k := st.Final.Known; k != nil && st.Target != nil && st.Target.File != "" {
		prog.Tell(st.Target.File, k.Runtime)
	}
	django := false
	for round := 0; ; round++ {
		for len(queue) > 0 {
			name := queue[0]
			queue = queue[1:]
			f := prog.Skim(name)
			if st.Target != nil && (name == st.Target.File || name == st.Target.Sourced) {
				f = prog.File(name)
			}
			if f == nil {
				continue
			}
			files = append(files, f)
			if f.Lang == code.Go { // the files of a package are one
				for _, entry := range s.Tree.In(source.Dir(name)) {
					if strings.HasSuffix(entry.Path, ".go") && !strings.HasSuffix(entry.Path, "_test.go") && entry.OnDisk {
						push(entry.Path)
					}
				}
			}
			for _, imp := range f.Imports {
				if imp.Node.Flag&code.TypeOnly != 0 || typeChecking(imp) {
					continue
				}
				for _, i := range prog.m.Classify(f, imp.Node) {
					if i.File != "" && code.LanguageOf(i.File) != code.None && !IsTest(i.File) {
						push(i.File)
					}
				}
			}
		}
		if django || s.Runtime.Name() != "python" {
			break
		}
		django = true
		s.django(st, prog, files, push)
		if len(queue) == 0 {
			break
		}
	}
	for _, f := range files {
		st.Reached = append(st.Reached, f.Name)
	}
	return files
}

// django adds what a Django site loads by name: the settings module, the
// installed applications, the URL configuration.
func (s *Starter) django(st *fact.Start, prog *Program, files []*code.File, push func(string)) {
	module, step := s.settingsModule(st, prog, files)
	if module == "" {
		return
	}
	from := &code.File{Name: s.C.Path("manage.py"), Lang: code.Python}
	name, ok := prog.Resolve(from, module, "")
	if !ok || !strings.HasSuffix(name, ".py") {
		return
	}
	_ = step
	push(name)
	st.Config = prog.File(name)
	if st.Config == nil {
		return
	}
	st.Program.Settings = st.Config
	e := value.New(prog, "")
	app := func(text string) {
		parts := strings.Split(text, ".")
		for n := len(parts); n > 0; n-- {
			file, ok := prog.Resolve(from, strings.Join(parts[:n], "."), "")
			if !ok {
				continue
			}
			dir := source.Dir(file)
			if !strings.HasSuffix(file, ".py") {
				dir = file
			}
			if args := st.Final.Free(); s.isManage(st) && len(args) > 1 && args[1].Literal() { // a command of its own
				if p := join(dir, "management/commands/"+args[1].Text+".py"); s.Tree.Has(p) {
					push(p)
				}
			}
			if n == len(parts) || strings.HasSuffix(file, "apps.py") {
				for _, entry := range s.Tree.In(dir) {
					if strings.HasSuffix(entry.Path, ".py") && !IsTest(entry.Path) {
						push(entry.Path)
					}
				}
			}
			return
		}
	}
	if v := e.Name(st.Config, "INSTALLED_APPS"); v != nil {
		v.Walk(func(k *value.Value) {
			if k.Kind == value.Str {
				app(k.Text)
			}
		})
	}
	if v := e.Name(st.Config, "ROOT_URLCONF"); v != nil && v.Kind == value.Str {
		if f, ok := prog.Resolve(from, v.Text, ""); ok {
			push(f)
		}
	}
	if v := e.Name(st.Config, "MIDDLEWARE"); v != nil {
		v.Walk(func(k *value.Value) {
			if k.Kind == value.Str {
				if i := strings.LastIndexByte(k.Text, '.'); i > 0 {
					if f, ok := prog.Resolve(from, k.Text[:i], ""); ok {
						push(f)
					}
				}
			}
		})
	}
}

// settingsModule says which settings a Django site is started with.
func (s *Starter) settingsModule(st *fact.Start, prog *Program, files []*code.File) (string, place.Span) {
	if v := st.Env["DJANGO_SETTINGS_MODULE"]; v != "" {
		return v, st.At
	}
	if w, ok, _ := st.Final.Flag("--settings"); ok && w.Literal() {
		return w.Text, w.At
	}
	for _, w := range st.Final.Flags("-e", "--env") {
		if v, ok := strings.CutPrefix(w.Text, "DJANGO_SETTINGS_MODULE="); ok {
			return v, w.At
		}
	}
	if manage := s.C.Path("manage.py"); len(files) == 0 || !s.Tree.Has(manage) {
		if f := prog.File(manage); f != nil {
			files = append(files, f)
		}
	}
	e := value.New(prog, "")
	for _, f := range files {
		if !strings.Contains(string(f.Src), "DJANGO_SETTINGS_MODULE") {
			continue
		}
		for _, site := range f.Calls {
			args := site.Node.Args()
			if len(args) == 2 && args[0].Is(code.String) && args[0].Name == "DJANGO_SETTINGS_MODULE" {
				if o := e.Expr(args[1], site.Scope).Under(value.Environ{}); o.Kind == value.Str {
					return o.Text, f.At(args[1])
				}
			}
		}
		for _, site := range f.Sets {
			if site.Node.Is(code.Index) && site.Node.Kid(1).Is(code.String) && site.Node.Kids[1].Name == "DJANGO_SETTINGS_MODULE" {
				if o := e.Expr(site.Value, site.Scope).Under(value.Environ{}); o.Kind == value.Str {
					return o.Text, f.At(site.Value)
				}
			}
		}
	}
	return "", place.Span{}
}

// settings gathers the production settings of the framework.
func (s *Starter) settings(st *fact.Start, prog *Program, files []*code.File) {
	e := st.Program
	add := func(framework, name string, v *value.Value, module string) {
		if v == nil {
			return
		}
		at := v.At
		if at.Line == 0 && len(v.Steps) > 0 {
			at = v.Steps[0].At
		}
		st.Settings = append(st.Settings, fact.Setting{Framework: framework, Name: name, Value: v, At: at, Module: module})
	}
	if st.Config != nil {
		for _, n := range []string{"DEBUG", "ALLOWED_HOSTS", "SECRET_KEY"} {
			v := e.Name(st.Config, n)
			if v == nil && n == "ALLOWED_HOSTS" { // Django's own default is the empty list
				v = &value.Value{Kind: value.List, At: place.Whole(st.Config.Name)}
				v.At.Line, v.At.Col, v.At.EndLine, v.At.EndCol = 1, 1, 1, 1
			}
			add("Django", n, v, st.Config.Name)
		}
		return
	}
	for _, f := range files {
		if f.Lang != code.Python {
			return
		}
		for _, site := range f.Sets { // app.debug = True
			if site.Node.Is(code.Member) && site.Node.Name == "debug" {
				if o := e.Expr(site.Node.Kid(0), site.Scope); o.Kind == value.External && (o.Text == "flask.Flask()" || o.Text == "fastapi.FastAPI()") {
					add("Flask", "debug", e.Expr(site.Value, site.Scope), f.Name)
				}
			}
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !callee.Is(code.Name) && !callee.Is(code.Member) {
				continue
			}
			switch callee.Name {
			case "FastAPI", "Starlette", "TrustedHostMiddleware", "add_middleware":
				_, keys := e.Arguments(site)
				if v := keys["debug"]; v != nil && callee.Name != "add_middleware" {
					add(callee.Name, "debug", v, f.Name)
				}
				if v := keys["allowed_hosts"]; v != nil {
					add("FastAPI", "allowed_hosts", v, f.Name)
				}
			}
		}
	}
	usesFlask := false
	for _, fw := range s.C.Frameworks {
		usesFlask = usesFlask || fw == "Flask"
	}
	if usesFlask {
		for _, n := range []string{"DEBUG", "TRUSTED_HOSTS"} {
			if v := e.Config(n); v != nil && v.Kind != value.Undef {
				add("Flask", n, v, "")
			}
		}
		for _, n := range []string{"FLASK_DEBUG", "FLASK_ENV"} {
			if v, ok := st.Env[n]; ok {
				at := st.At
				for _, a := range st.Final.Env {
					if a.Name == n {
						at = a.At
					}
				}
				if st.Descriptor != nil && st.Descriptor.Image != nil {
					if p, ok := st.Descriptor.Image.EnvAt[n]; ok {
						at = p
					}
				}
				add("Flask", n, value.Text(v, at), "")
			}
		}
	}
}

// hypercornConfig reads bind of the file given with -c: TOML, or Python after
// file: (Hypercorn 0.17, "Configuring").
func (s *Starter) hypercornConfig(st *fact.Start, prog *Program) {
	w, ok, _ := st.Final.Flag("-c", "--config")
	if !ok || !w.Literal() {
		return
	}
	base := st.Listeners[0]
	if strings.HasPrefix(w.Text, "python:") && base.Via == "default" {
		base.Bind = value.NotKnown("the settings in "+w.Text, w.At)
		return
	}
	file, python := strings.CutPrefix(w.Text, "file:")
	p, ok := source.Join(st.Final.Dir, file)
	if !ok {
		return
	}
	var binds []*value.Value
	if python {
		f := prog.File(p)
		if f == nil || len(f.Top.Names["bind"]) == 0 {
			return
		}
		v := st.Program.Expr(&code.Node{Kind: code.Name, Name: "bind"}, f.Top)
		if binds = []*value.Value{v}; v.Kind == value.List {
			binds = v.Kids
		}
	} else if d := prog.Data(p); d != nil {
		if v := value.FromDocument(d.Get("bind")); d.Get("bind") != nil {
			if binds = []*value.Value{v}; v.Kind == value.List {
				binds = v.Kids
			}
		}
		if n := d.Get("workers"); n != nil && st.Final.Flags("-w", "--workers") == nil {
			if v := value.FromDocument(n); v.Kind == value.Num && v.Num == 0 { // hypercorn 0.13, run.run: it starts no process and is done
				base.Ended = "it has no workers"
			}
		}
	}
	if len(binds) == 0 {
		return
	}
	st.Listeners = nil
	for _, b := range binds {
		l := *base
		l.Via, l.Bind = "setting", b
		l.At = placeOf(b, base.At)
		l.PortAt, l.HostAt = l.At, l.At
		st.Listeners = append(st.Listeners, &l)
	}
	st.Reached = append(st.Reached, p)
}

// viteConfig reads where the server of Vite listens from its settings: those of
// the preview, which takes the host of the development server where it has none
// (Vite 7, "Server Options", "Preview Options"). What the command line says
// counts before them.
func (s *Starter) viteConfig(st *fact.Start, prog *Program) {
	names := []string{"vite.config.js", "vite.config.mjs", "vite.config.ts", "vite.config.cjs", "vite.config.mts", "vite.config.cts"}
	if w, ok, _ := st.Final.Flag("-c", "--config"); ok && w.Literal() {
		names = []string{w.Text}
	}
	var f *code.File
	for _, n := range names {
		if p, ok := source.Join(st.Final.Dir, n); ok && f == nil {
			f = prog.File(p)
		}
	}
	if f == nil {
		return
	}
	l := st.Listeners[0]
	e := value.New(prog, f.Name)
	e.Dir = st.Final.Dir
	given := &value.Value{Kind: value.Object, Keys: []string{"command", "mode", "isPreview"}, Kids: []*value.Value{
		value.Text("serve", l.At), value.Text("production", l.At), {Kind: value.Bool, Num: 1, At: l.At}}}
	all := e.Configured(f, given)
	if all.Kind != value.Object {
		for _, p := range []**value.Value{&l.Host, &l.Port} {
			if *p == nil {
				*p = value.NotKnown("the settings in "+f.Name, place.Whole(f.Name))
			}
		}
		return
	}
	set := func(key string) *value.Value {
		v := all.Get("server").Get(key)
		if l.Server == "vite preview" {
			if key == "port" {
				v = nil
			}
			if w := all.Get("preview").Get(key); w != nil {
				v = w
			}
		}
		return v
	}
	if v := set("port"); v != nil && l.Port == nil {
		l.Port, l.PortAt, l.Via = v, placeOf(v, l.At), "setting"
	}
	if v := set("host"); v != nil && l.Host == nil {
		l.Host, l.HostAt, l.Via = v, placeOf(v, l.At), "setting"
		if v.Kind == value.Bool {
			l.Host = map[bool]*value.Value{true: value.Text("0.0.0.0", v.At), false: nil}[v.Num != 0]
		}
	}
	st.Reached = append(st.Reached, f.Name)
}

// rubyConfigs are the servers of Ruby whose settings are a file of Ruby: where
// it lies, the flags that name another one, the calls that say where it listens
// (Puma, "Puma::DSL"; Unicorn, "Unicorn::Configurator").
var rubyConfigs = map[string]struct {
	files []string
	flags []string
	port  string // the call that takes a port
	bind  string // the call that takes an address, or a port alone
}{
	"puma":    {[]string{"config/puma.rb"}, []string{"-C", "--config"}, "port", "bind"},
	"unicorn": {[]string{"unicorn.conf.rb", "config/unicorn.rb"}, []string{"-c", "--config-file"}, "", "listen"},
}

// rubyConfig reads where a server of Ruby listens from its settings; a variable
// in them is read as Ruby does.
func (s *Starter) rubyConfig(st *fact.Start, prog *Program) {
	c := rubyConfigs[st.Listeners[0].Server]
	names := c.files
	if w, ok, _ := st.Final.Flag(c.flags...); ok && w.Literal() {
		names = []string{w.Text}
	} else if st.Listeners[0].Server == "unicorn" {
		return // it has no file that it reads by itself
	}
	if st.Listeners[0].Server == "puma" && len(names) == len(c.files) && names[0] == c.files[0] && s.pumaStages(st, prog) {
		return
	}
	for _, name := range names {
		p, ok := source.Join(st.Final.Dir, name)
		if !ok || !s.Tree.Has(p) {
			continue
		}
		f := prog.File(p)
		if f == nil {
			return
		}
		x := &rubySettings{st: st, f: f, port: c.port, bind: c.bind, base: *st.Listeners[0]}
		var list []*fact.Listener
		for _, site := range f.Calls {
			if callee := site.Node.Kid(0); callee.Is(code.Name) && site.Node.Kid(1) != nil && (callee.Name == c.port || callee.Name == c.bind) {
				list = append(list, x.listener(site, 0))
			}
		}
		if len(list) > 0 {
			st.Listeners = list
			st.More = x.more
		}
		for _, l := range st.Listeners {
			endsFirst(l, func(env value.Environ) string { return ended(x.run(env), whileRead+p) })
		}
		st.Reached = append(st.Reached, p)
		return
	}
}

// pass adds an argument that the command gives to the program.
func pass(e *value.Eval, w command.Word) {
	e.Args = append(e.Args, w.Value)
	e.Quoted = append(e.Quoted, !w.Bare)
}

// rubySettings are the settings of a server that are a file of Ruby. The file is
// gone through where its values do not tell.
type rubySettings struct {
	st         *fact.Start
	f          *code.File
	port, bind string
	base       fact.Listener
	known      runs
}

// of is the listener that a call makes of what it is given.
func (x *rubySettings) of(call string, v *value.Value) fact.Listener {
	l := x.base
	l.Via = "setting"
	if call == x.bind && (l.Server == "puma" || addressed(v)) {
		l.Bind = v
	} else {
		l.Port = v
	}
	return l
}

func (x *rubySettings) run(env value.Environ) *trace.Result {
	return x.known.under(env, func() trace.Result {
		return trace.Run(x.st.Program, x.f, env, func(v *value.Value) (note, stays bool) {
			return v.Text == x.port || v.Text == x.bind, false
		})
	})
}

// listener is that of a call, for one of the times that it is come to.
func (x *rubySettings) listener(site code.Site, which int) *fact.Listener {
	callee, at := site.Node.Kid(0), x.f.At(site.Node)
	l := x.of(callee.Name, x.st.Program.Expr(site.Node.Kids[1], site.Scope))
	l.At, l.PortAt, l.HostAt = at, x.f.At(site.Node.Kids[1]), x.f.At(site.Node.Kids[1])
	if host := site.Node.Kid(2); host != nil && callee.Name == x.port && !host.Is(code.Keyword) {
		l.Host, l.HostAt = x.st.Program.Expr(host, site.Scope), x.f.At(host)
	}
	guardedBy(&l, x.st.Program, site)
	l.Follow = func(env value.Environ) (fact.Outcome, bool) {
		r := x.run(env)
		if r.Reason != "" || r.Ended != "" {
			return fact.Outcome{}, false
		}
		n := 0
		for _, c := range r.Calls {
			if c.At != at || len(c.Args) == 0 {
				continue
			}
			if n == which {
				there := x.of(callee.Name, c.Args[0])
				if len(c.Args) > 1 && callee.Name == x.port {
					there.Host = c.Args[1]
				}
				return known(there.Under(env))
			}
			n++
		}
		return fact.Outcome{Outcome: "skipped", Port: -1, Reason: "the settings do not come to it"}, true
	}
	return &l
}

// more adds listeners for calls that are come to more than once.
func (x *rubySettings) more(env value.Environ) {
	times := map[place.Span]int{}
	for _, c := range x.run(env).Calls {
		if times[c.At]++; times[c.At] > 1 && times[c.At] <= 8 && c.File == x.f {
			x.st.Listeners = append(x.st.Listeners, x.listener(code.Site{Node: c.Node, Scope: x.f.Top}, times[c.At]-1))
		}
	}
}

// addressed reports whether a value is an address or the path of a socket, and
// not a port alone.
func addressed(v *value.Value) bool {
	if v == nil {
		return false
	}
	if v.Kind == value.Str {
		return strings.ContainsAny(v.Text, ":/")
	}
	return (v.Kind == value.Op && (v.Text == "concat" || v.Text == "||" || v.Text == "??") || v.Kind == value.Cond) && slices.ContainsFunc(v.Kids, addressed)
}

// gunicornFile is the file of settings that gunicorn reads: the one given with -c, or
// its own.
func (s *Starter) gunicornFile(st *fact.Start, ctx command.Context) string {
	given := ""
	if w, ok, _ := st.Final.Flag("-c", "--config"); ok && w.Literal() {
		given = w.Text
	}
	return s.gunicornNamed(st, ctx, given)
}

// gunicornChosen follows a file of settings that the environment chooses.
func (s *Starter) gunicornChosen(st *fact.Start, prog *Program, ctx command.Context, w command.Word) {
	l := st.Listeners[0]
	l.Follow = func(env value.Environ) (fact.Outcome, bool) {
		o := w.Value.Under(env)
		if o.Kind != value.Str || o.Text == "" {
			return fact.Outcome{}, false
		}
		f := prog.File(s.gunicornNamed(st, ctx, o.Text))
		if f == nil || f.Lang != code.Python {
			return fact.Outcome{}, false
		}
		v, ok := trace.Name(st.Program, f, env, "bind")
		if ok && v.Kind == value.List && len(v.Kids) == 1 {
			v = v.Kids[0]
		}
		if !ok || v.Kind != value.Str {
			return fact.Outcome{}, false
		}
		there := *l
		there.Bind, there.Follow = v, nil
		return known(there.Under(env))
	}
}

// gunicornNamed is the file of settings that gunicorn reads, by what it is told; empty where
// the tree does not have it.
func (s *Starter) gunicornNamed(st *fact.Start, ctx command.Context, given string) string {
	name := "gunicorn.conf.py"
	if given != "" {
		name = strings.TrimPrefix(given, "file:")
		if module, ok := strings.CutPrefix(given, "python:"); ok {
			name = strings.ReplaceAll(module, ".", "/") + ".py"
		}
	}
	p, ok := st.Final.Locate(name, ctx)
	if !ok || !s.Tree.Has(p) {
		return ""
	}
	return p
}

// gunicornConfig reads bind from gunicorn.conf.py or the file given with -c.
func (s *Starter) gunicornConfig(st *fact.Start, prog *Program) {
	if st.Server == "" {
		return
	}
	p := st.Server
	f := prog.File(p)
	if f == nil {
		return
	}
	v := st.Program.Name(f, "bind")
	if v == nil {
		return
	}
	l := *st.Listeners[0]
	l.Via, l.At, l.PortAt, l.HostAt = "setting", placeOf(v, place.Whole(p)), placeOf(v, place.Whole(p)), placeOf(v, place.Whole(p))
	st.Listeners = nil
	binds := []*value.Value{v}
	if v.Kind == value.List {
		binds = v.Kids
	}
	// The file is gone through where its values do not tell. A list may change as it goes.
	grows := v.Kind == value.List && slices.ContainsFunc(f.Calls, func(c code.Site) bool { return strings.HasPrefix(c.Node.Kid(0).Dotted(), "bind.") })
	if v.Kind != value.List || grows {
		for _, env := range []value.Environ{{}, {Set: map[string]string{"PORT": "8080"}}} {
			if now, ok := trace.Name(st.Program, f, env, "bind"); ok && now.Kind == value.List && len(now.Kids) > 0 && (len(now.Kids) > len(binds) || v.Kind != value.List) {
				binds = nil
				for range now.Kids {
					binds = append(binds, value.NotKnown("the addresses in "+p, placeOf(v, place.Whole(p))))
					if v.Kind != value.List {
						binds[len(binds)-1] = v
					}
				}
			}
		}
	}
	listed := 0
	add := func(b *value.Value) {
		i, c := listed, l
		listed++
		c.Bind = b
		c.Follow = func(env value.Environ) (fact.Outcome, bool) {
			v, ok := trace.Name(st.Program, f, env, "bind")
			if ok && v.Kind == value.List && len(v.Kids) <= listed {
				if i >= len(v.Kids) {
					return fact.Outcome{Outcome: "skipped", Port: -1, Reason: "there are fewer addresses"}, true
				}
				v = v.Kids[i]
			}
			if !ok || v.Kind != value.Str {
				return fact.Outcome{}, false
			}
			there := c
			there.Bind, there.Follow = v, nil
			return known(there.Under(env))
		}
		st.Listeners = append(st.Listeners, &c)
	}
	for _, b := range binds {
		add(b)
	}
	st.More = func(env value.Environ) {
		if now, ok := trace.Name(st.Program, f, env, "bind"); ok && now.Kind == value.List && len(now.Kids) <= 8 {
			for listed < len(now.Kids) {
				add(value.NotKnown("the addresses in "+p, l.At))
			}
		}
	}
	st.Reached = append(st.Reached, p)
}

// gunicornEnds lets the settings of gunicorn end it, wherever its address comes from.
func (s *Starter) gunicornEnds(st *fact.Start, prog *Program) {
	f := prog.File(st.Server)
	if f == nil || f.Lang != code.Python {
		return
	}
	var through runs
	run := func(env value.Environ) *trace.Result {
		return through.under(env, func() trace.Result {
			return trace.Run(st.Program, f, env, func(*value.Value) (note, stays bool) { return false, false })
		})
	}
	for _, l := range st.Listeners {
		endsFirst(l, func(env value.Environ) string { return ended(run(env), whileRead+st.Server) })
	}
}

// CompiledFrom finds the source of a file in a folder of build output, whether
// the component has a build step or not.
func CompiledFrom(t *source.Tree, c *fact.Component, file string) (src string, ok bool) {
	rel := strings.TrimPrefix(strings.TrimPrefix(file, c.Dir), "/")
	top, rest, nested := strings.Cut(rel, "/")
	if !nested || top != "dist" && top != "build" && top != "out" && top != "lib" && top != ".output" && top != ".next" {
		return "", false
	}
	stem := strings.TrimSuffix(rest, path.Ext(rest))
	for _, base := range []string{"src", "", "server", "source"} {
		for _, ext := range []string{".ts", ".mts", ".tsx", ".cts", ".js", ".mjs"} {
			n := c.Path(path.Join(base, stem+ext))
			if base != "src" && strings.HasSuffix(ext, "js") {
				continue // more likely the file that was meant
			}
			if n != file && t.Has(n) && !strings.HasPrefix(strings.TrimPrefix(n, c.Dir), top+"/") {
				return n, true
			}
		}
	}
	return "", false
}

// systemProperties are what -D sets on the command line of a virtual machine,
// before what it runs (the java command, "Standard Options").
func systemProperties(st *fact.Start) map[string]*value.Value {
	m := map[string]*value.Value{}
	for _, w := range st.Final.Args {
		if st.Target != nil && w.At == st.Target.At {
			break
		}
		rest, ok := strings.CutPrefix(w.Text, "-D")
		if !ok {
			continue
		}
		name, text, _ := strings.Cut(rest, "=")
		v := value.Text(text, w.At)
		if !w.Literal() && w.Value != nil && len(w.Value.Kids) > 0 && w.Value.Kids[0].Kind == value.Str {
			head := strings.TrimPrefix(w.Value.Kids[0].Text, "-D"+name+"=")
			v = value.Concat(append([]*value.Value{value.Text(head, w.At)}, w.Value.Kids[1:]...)...)
			if head == "" && len(w.Value.Kids) == 2 {
				v = w.Value.Kids[1]
			}
		}
		m[strings.Trim(name, `"`)] = v
	}
	return m
}

// railsPort takes the port of config/puma.rb for `rails server`, which starts
// Puma (Rails guides, "The Rails Command Line", server).
func (s *Starter) railsPort(st *fact.Start, prog *Program) {
	l := st.Listeners[0]
	p := join(st.Final.Dir, "config/puma.rb")
	if !s.Tree.Has(p) {
		return
	}
	f := prog.File(p)
	if f == nil {
		return
	}
	for _, site := range f.Calls {
		if callee := site.Node.Kid(0); callee.Is(code.Name) && callee.Name == "port" && site.Node.Kid(1) != nil && len(site.Guards) == 0 {
			l.Port, l.PortAt, l.Via = st.Program.Expr(site.Node.Kids[1], site.Scope), f.At(site.Node.Kids[1]), "setting"
		}
	}
}

// uwsgiConfig adds what the ini file of uWSGI binds (uWSGI documentation,
// "Options" and "Configuring uWSGI": $(NAME) is a variable, a blank after the
// sign = is dropped).
func (s *Starter) uwsgiConfig(st *fact.Start, prog *Program) {
	name := ""
	if w, ok, _ := st.Final.Flag("--ini"); ok && w.Literal() {
		name = w.Text
	}
	for _, w := range st.Final.Free() {
		if name == "" && w.Literal() && strings.HasSuffix(w.Text, ".ini") {
			name = w.Text
		}
	}
	p, ok := source.Join(st.Final.Dir, strings.TrimSuffix(name, ":uwsgi"))
	if name == "" || !ok || !s.Tree.Has(p) {
		return
	}
	f, err := s.Tree.Code(p)
	if err != nil {
		return
	}
	section := document.INI(p, f.Data, f.Lines()).Get("uwsgi")
	for _, k := range section.Items() {
		switch k.Key {
		case "http", "http-socket", "socket", "https", "shared-socket":
			l := &fact.Listener{Process: st.Process, Server: "uwsgi", Via: "setting", At: k.At(), PortAt: k.At(), HostAt: k.At(), Bind: bracketed(k.Text, k.At())}
			st.Listeners = append(st.Listeners, l)
		case "module", "wsgi":
			if st.Target == nil {
				t := &fact.Target{Named: k.Text, At: k.At(), Kind: command.CallableTarget}
				t.Module, t.Callable, _ = strings.Cut(k.Text, ":")
				if t.Callable == "" {
					t.Callable = "application"
					if c := section.Get("callable"); c != nil {
						t.Callable = c.Text
					}
				}
				if file, ok := prog.Resolve(&code.File{Name: join(st.Final.Dir, "__main__.py"), Lang: code.Python}, t.Module, ""); ok && strings.HasSuffix(file, ".py") {
					t.File = file
				}
				st.Target = t
			}
		}
	}
}

// bracketed puts together a text with $(NAME) in it.
func bracketed(text string, at place.Span) *value.Value {
	return value.Fill(text, "$(", ")", at, func(name string) *value.Value {
		return value.Variable(name, value.ReadsEmpty, at)
	})
}
