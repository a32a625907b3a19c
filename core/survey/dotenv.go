package survey

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// loaders are the calls that read a dotenv file into the environment
// (documentation of dotenv 17, python-dotenv 1.2, django-environ 0.12 and
// environs 14).
var loaders = map[string]bool{"dotenv.config": true, "dotenv.configDotenv": true, "dotenv.load_dotenv": true, "dotenv.main.load_dotenv": true,
	"dotenv-flow.config": true, "dotenv-safe.config": true,
	"environ.Env.read_env": true, "environ.Env().read_env": true, "environs.Env().read_env": true, "environs.env.read_env": true}

// dotenvPackages are the packages whose calls these are.
var dotenvPackages = map[string]bool{"dotenv": true, "dotenv-flow": true, "dotenv-safe": true, "python-dotenv": true, "environ": true, "django-environ": true, "environs": true}

// dotenvFiles lists the dotenv files that a start reads, in the order in which
// they are read. A file that is named by what cannot be told is left out. Dotenv
// says that python-dotenv is there.
func dotenvFiles(st *fact.Start, files []*code.File, dotenv bool) []fact.Dotenv {
	var list []fact.Dotenv
	beside := func(name string) {
		if p, ok := source.Join(st.Final.Dir, name); ok {
			list = append(list, fact.Dotenv{Path: p})
		}
	}
	for _, d := range st.Final.Dotenv {
		list = append(list, fact.Dotenv{Path: d.Path, Over: d.Over})
	}
	for _, w := range st.Final.Flags("--env-file", "--env-file-if-exists") {
		beside(w.Text)
	}
	for _, w := range st.Final.Flags("-r", "--require", "--import") { // documentation of dotenv 17, "Preload"
		switch strings.TrimSuffix(w.Text, ".js") {
		case "dotenv/config", "dotenv-safe/config":
			list = append(list, preloaded(st))
		case "dotenv-flow/config":
			list = append(list, flowing(st, nil, st.At)...)
		}
	}
	if others, ok := otherDotenv(st, files); ok {
		return append(list, others...)
	}
	if st.Final.Known != nil && st.Final.Known.Server == "flask run" && dotenv {
		// Where python-dotenv is there, .env first (Flask 3.1, "Environment
		// Variables From dotenv").
		beside(".env")
		beside(".flaskenv")
	}
	for _, f := range files { // Node.js 24, process.loadEnvFile
		for _, site := range f.Calls {
			if callee := site.Node.Kid(0); callee.Is(code.Member) && callee.Name == "loadEnvFile" && callee.Kid(0).Is(code.Name) && callee.Kids[0].Name == "process" {
				if site.Node.Kid(1) == nil {
					list = append(list, fact.Dotenv{Path: path.Join(st.Final.Dir, ".env"), When: when(st, site)})
				} else if d, ok := naming(st, st.Program.Expr(site.Node.Kids[1], site.Scope)); ok {
					d.When = when(st, site)
					list = append(list, d)
				}
			}
		}
	}
	imported, called, plain, flows := false, false, false, false
	for _, i := range st.Imports {
		plain = plain || (i.Package == "dotenv" || i.Package == "dotenv-safe") && !i.TypeOnly
		flows = flows || i.Package == "dotenv-flow" && !i.TypeOnly
		imported = imported || dotenvPackages[i.Package] && !i.TypeOnly
	}
	if !imported {
		return list
	}
	for _, f := range files {
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !callee.Is(code.Name) && !callee.Is(code.Member) || callee.Name != "config" && callee.Name != "configDotenv" && callee.Name != "load_dotenv" && callee.Name != "read_env" {
				continue
			}
			if cv := st.Program.Callee(site); cv.Kind != value.External || !loaders[cv.Text] {
				continue
			}
			called = true
			if cv := st.Program.Callee(site); cv.Text == "dotenv-flow.config" {
				for _, d := range flowing(st, st.Program.Expr(site.Node.Kid(1), site.Scope), f.At(site.Node)) {
					d.When = when(st, site)
					list = append(list, d)
				}
				continue
			}
			var named *code.Node
			over := false
			for i, a := range site.Node.Args() {
				switch {
				case a.Is(code.Object):
					for _, p := range a.Kids {
						over = over || p.Name == "override" && p.Kid(0).Is(code.True)
						if p.Name == "path" {
							named = p.Kid(0)
						}
					}
				case a.Is(code.Keyword):
					over = over || a.Name == "override" && a.Kid(0).Is(code.True)
					if a.Name == "dotenv_path" {
						named = a.Kid(0)
					}
				case i == 0 && f.Lang == code.Python:
					named = a
				}
			}
			names := []*code.Node{named}
			if named.Is(code.Array) { // the first that has a name counts
				names = named.Kids
			}
			for _, k := range names {
				d, ok := fact.Dotenv{Path: path.Join(st.Final.Dir, ".env")}, true
				if k != nil {
					d, ok = naming(st, st.Program.Expr(k, site.Scope))
				}
				if ok {
					d.When, d.Over = when(st, site), over
					list = append(list, d)
				}
			}
		}
	}
	if !called && plain {
		list = append(list, preloaded(st)) // dotenv/config
	}
	if !called && flows {
		list = append(list, flowing(st, nil, st.At)...) // dotenv-flow/config
	}
	return list
}

// flowing lists the files of dotenv-flow, from the one that counts most: those of the
// environment's name before the others, local ones before those that are shared
// (dotenv-flow 4, "Files priority"). Options are those of its call.
func flowing(st *fact.Start, options *value.Value, at place.Span) (list []fact.Dotenv) {
	text := func(s string) *value.Value { return value.Text(s, at) }
	mode := value.Variable("NODE_ENV", value.ReadsUndef, at)
	if v := options.Get("default_node_env"); v != nil {
		mode = value.Or(mode, v, at)
	}
	if v := options.Get("node_env"); v != nil {
		mode = value.Or(v, mode, at)
	}
	named := func(parts ...*value.Value) *value.Value {
		if dir := options.Get("path"); dir != nil {
			parts = append([]*value.Value{dir, text("/")}, parts...)
		}
		return &value.Value{Kind: value.Op, Text: "concat", At: at, Kids: parts}
	}
	tested := &value.Value{Kind: value.Op, Text: "!=", At: at, Kids: []*value.Value{mode, text("test")}}
	return []fact.Dotenv{
		{By: named(text(".env."), mode, text(".local")), When: mode}, {By: named(text(".env."), mode), When: mode},
		{By: named(text(".env.local")), When: tested}, {By: named(text(".env"))}, {By: named(text(".env.defaults"))},
	}
}

// naming is the file that a value names, in an environment where that decides it.
func naming(st *fact.Start, v *value.Value) (fact.Dotenv, bool) {
	if len(v.Variables()) > 0 {
		return fact.Dotenv{By: v}, true
	}
	p, ok := st.Program.PathOf(v)
	return fact.Dotenv{Path: p}, ok
}

// preloaded is the file that dotenv/config reads: the one that the command or the
// environment names, else .env (documentation of dotenv 17, "Preload").
func preloaded(st *fact.Start) fact.Dotenv {
	d := fact.Dotenv{By: value.Or(value.Variable("DOTENV_CONFIG_PATH", value.ReadsUndef, st.At), value.Text(".env", st.At), st.At)}
	for _, a := range st.Final.Args {
		if p, ok := strings.CutPrefix(a.Text, "dotenv_config_path="); ok {
			d.By = value.Text(p, a.At)
		}
		d.Over = d.Over || a.Text == "dotenv_config_override=true"
	}
	return d
}

// otherDotenv lists the dotenv files of the other languages: Ruby's gem dotenv,
// PHP's phpdotenv and Laravel, Go's godotenv, Rust's dotenvy; Bun reads them by
// itself (documentation of dotenv 3.1, phpdotenv 5.6, godotenv 1.5, dotenvy
// 0.15, Bun 1.4 "Environment variables"). ok is false where another rule counts.
func otherDotenv(st *fact.Start, files []*code.File) (list []fact.Dotenv, ok bool) {
	if st.Final.Program == "bun" {
		mode := value.Or(value.Variable("NODE_ENV", value.ReadsUndef, st.At), value.Text("development", st.At), st.At)
		for _, v := range []*value.Value{value.Text(".env.local", st.At), {Kind: value.Op, Text: "concat", At: st.At, Kids: []*value.Value{value.Text(".env.", st.At), mode}}, value.Text(".env", st.At)} {
			list = append(list, fact.Dotenv{By: v})
		}
		return list, true
	}
	found := false
	for _, f := range files {
		switch f.Lang {
		case code.Ruby, code.PHP, code.Go, code.Rust:
		default:
			continue
		}
		for _, site := range f.Calls {
			add := func(d fact.Dotenv) {
				found = true
				d.When = when(st, site)
				list = append(list, d)
			}
			plain := func() {
				if p, ok := source.Join(st.Final.Dir, ".env"); ok {
					add(fact.Dotenv{Path: p})
				}
			}
			n := site.Node
			callee := n.Kid(0)
			name := callee.Dotted()
			last := value.Tail(name, 1)
			if callee.Is(code.Member) {
				last = callee.Name
			}
			switch {
			case f.Lang == code.Ruby && callee.Is(code.Name) && callee.Name == "require" && n.Kid(1).Is(code.String) && (n.Kids[1].Name == "dotenv/load" || n.Kids[1].Name == "dotenv/autorestore"):
				plain()
			case f.Lang == code.Ruby && (name == "Dotenv.load" || name == "Dotenv.load!" || name == "Dotenv.overload"),
				f.Lang == code.Go && (name == "godotenv.Load" || name == "godotenv.Overload"):
				if len(n.Args()) == 0 {
					plain()
				}
				for _, a := range n.Args() {
					if d, ok := naming(st, st.Program.Expr(a, site.Scope)); ok {
						d.Over = strings.HasSuffix(strings.ToLower(name), "overload")
						add(d)
					}
				}
			case f.Lang == code.Rust && (last == "dotenv" && (strings.HasPrefix(name, "dotenv") || name == "dotenv") || name == "dotenvy.dotenv_override"):
				plain()
			case f.Lang == code.PHP && (last == "createImmutable" || last == "createMutable" || last == "createUnsafeImmutable" || last == "bootEnv"):
				plain()
			}
		}
	}
	return list, found
}

// when is the condition on the environment under which a call reads its file; nil
// where there is none.
func when(st *fact.Start, site code.Site) (test *value.Value) {
	for _, g := range site.Guards {
		v := st.Program.Guard(g)
		switch {
		case len(v.Variables()) == 0:
		case test == nil:
			test = v
		default:
			test = &value.Value{Kind: value.Op, Text: "&&", At: v.At, Kids: []*value.Value{test, v}}
		}
	}
	return test
}
