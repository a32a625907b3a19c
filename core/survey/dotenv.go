package survey

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/value"
)

// loaders are the calls that read a dotenv file into the environment
// (documentation of dotenv 17, python-dotenv 1.2, django-environ 0.12 and
// environs 14).
var loaders = map[string]bool{"dotenv.config": true, "dotenv.configDotenv": true, "dotenv.load_dotenv": true, "dotenv.main.load_dotenv": true,
	"environ.Env.read_env": true, "environ.Env().read_env": true, "environs.Env().read_env": true, "environs.env.read_env": true}

// dotenvPackages are the packages whose calls these are.
var dotenvPackages = map[string]bool{"dotenv": true, "python-dotenv": true, "environ": true, "django-environ": true, "environs": true}

// dotenvFiles lists the dotenv files that a start reads, as paths of the tree,
// in the order in which they are read. A file that is named by what cannot be
// told is left out. Dotenv says that python-dotenv is there.
func dotenvFiles(st *fact.Start, files []*code.File, dotenv bool) []string {
	var list []string
	add := func(p string, ok bool) {
		if ok {
			list = append(list, p)
		}
	}
	for _, w := range st.Final.Flags("--env-file", "--env-file-if-exists") {
		add(source.Join(st.Final.Dir, w.Text))
	}
	for _, w := range st.Final.Flags("-r", "--require", "--import") { // documentation of dotenv 17, "Preload"
		if w.Text != "dotenv/config" && w.Text != "dotenv/config.js" {
			continue
		}
		preloaded(st)
	}
	if list2, ok := otherDotenv(st, files); ok {
		return append(list, list2...)
	}
	if st.Final.Known != nil && st.Final.Known.Server == "flask run" && dotenv {
		// Where python-dotenv is there, .env first (Flask 3.1, "Environment
		// Variables From dotenv").
		for _, name := range []string{".env", ".flaskenv"} {
			add(source.Join(st.Final.Dir, name))
		}
	}
	for _, f := range files { // Node.js 24, process.loadEnvFile
		for _, site := range f.Calls {
			if callee := site.Node.Kid(0); callee.Is(code.Member) && callee.Name == "loadEnvFile" && callee.Kid(0).Is(code.Name) && callee.Kids[0].Name == "process" {
				if site.Node.Kid(1) == nil {
					add(path.Join(st.Final.Dir, ".env"), true)
				} else {
					add(st.Program.PathOf(st.Program.Expr(site.Node.Kids[1], site.Scope)))
				}
			}
		}
	}
	imported, called, plain := false, false, false
	for _, i := range st.Imports {
		plain = plain || i.Package == "dotenv" && !i.TypeOnly
		imported = imported || dotenvPackages[i.Package] && !i.TypeOnly
	}
	if !imported {
		return list
	}
	for _, f := range files {
		for _, site := range f.Calls {
			add := where(st, site, add)
			callee := site.Node.Kid(0)
			if !callee.Is(code.Name) && !callee.Is(code.Member) || callee.Name != "config" && callee.Name != "configDotenv" && callee.Name != "load_dotenv" && callee.Name != "read_env" {
				continue
			}
			if cv := st.Program.Callee(site); cv.Kind != value.External || !loaders[cv.Text] {
				continue
			}
			called = true
			var named *code.Node
			for i, a := range site.Node.Args() {
				switch {
				case a.Is(code.Object):
					for _, p := range a.Kids {
						st.DotenvOver = st.DotenvOver || p.Name == "override" && p.Kid(0).Is(code.True)
						if p.Name == "path" {
							named = p.Kid(0)
						}
					}
				case a.Is(code.Keyword):
					st.DotenvOver = st.DotenvOver || a.Name == "override" && a.Kid(0).Is(code.True)
					if a.Name == "dotenv_path" {
						named = a.Kid(0)
					}
				case i == 0 && f.Lang == code.Python:
					named = a
				}
			}
			if named == nil {
				add(path.Join(st.Final.Dir, ".env"), true)
				continue
			}
			if named.Is(code.Array) { // the first that has a name counts
				for _, k := range named.Kids {
					add(st.Program.PathOf(st.Program.Expr(k, site.Scope)))
				}
				continue
			}
			v := st.Program.Expr(named, site.Scope)
			if len(v.Variables()) > 0 {
				st.DotenvBy = append(st.DotenvBy, v)
				continue
			}
			add(st.Program.PathOf(v))
		}
	}
	if !called && plain {
		preloaded(st) // dotenv/config
	}
	return list
}

// preloaded notes the file that dotenv/config reads: the one that the command or
// the environment names, else .env (documentation of dotenv 17, "Preload").
func preloaded(st *fact.Start) {
	name := value.Or(value.Variable("DOTENV_CONFIG_PATH", value.ReadsUndef, st.At), value.Text(".env", st.At), st.At)
	for _, a := range st.Final.Args {
		if p, ok := strings.CutPrefix(a.Text, "dotenv_config_path="); ok {
			name = value.Text(p, a.At)
		}
		st.DotenvOver = st.DotenvOver || a.Text == "dotenv_config_override=true"
	}
	st.DotenvBy = append(st.DotenvBy, name)
}

// otherDotenv lists the dotenv files of the other languages: Ruby's gem dotenv,
// PHP's phpdotenv and Laravel, Go's godotenv, Rust's dotenvy; Bun reads them by
// itself (documentation of dotenv 3.1, phpdotenv 5.6, godotenv 1.5, dotenvy
// 0.15, Bun 1.4 "Environment variables"). ok is false where another rule counts.
func otherDotenv(st *fact.Start, files []*code.File) (list []string, ok bool) {
	if st.Final.Program == "bun" {
		for _, name := range []string{".env.local", ".env"} {
			if p, ok := source.Join(st.Final.Dir, name); ok {
				list = append(list, p)
			}
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
			put := where(st, site, func(p string, _ bool) { list, found = append(list, p), true })
			add := func(name string) {
				found = true
				if p, ok := source.Join(st.Final.Dir, name); ok {
					put(p, true)
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
				add(".env")
			case f.Lang == code.Ruby && (name == "Dotenv.load" || name == "Dotenv.load!" || name == "Dotenv.overload"),
				f.Lang == code.Go && (name == "godotenv.Load" || name == "godotenv.Overload"):
				named := false
				st.DotenvOver = st.DotenvOver || strings.HasSuffix(strings.ToLower(name), "overload")
				for _, a := range n.Args() {
					if a.Is(code.String) {
						named = true
						add(a.Name)
					}
				}
				if !named {
					add(".env")
				}
			case f.Lang == code.Rust && (last == "dotenv" && (strings.HasPrefix(name, "dotenv") || name == "dotenv") || name == "dotenvy.dotenv_override"):
				add(".env")
			case f.Lang == code.PHP && (last == "createImmutable" || last == "createMutable" || last == "createUnsafeImmutable" || last == "bootEnv"):
				add(".env")
			}
		}
	}
	return list, found
}

// where is add for a file that a call reads: one under conditions on the
// environment is noted with them.
func where(st *fact.Start, site code.Site, add func(p string, ok bool)) func(p string, ok bool) {
	var test *value.Value
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
	if test == nil {
		return add
	}
	return func(p string, ok bool) {
		rel, inside := strings.CutPrefix(p, st.Final.Dir+"/")
		if st.Final.Dir == "" {
			rel, inside = p, true
		}
		if !ok || !inside {
			add(p, ok)
			return
		}
		st.DotenvBy = append(st.DotenvBy, &value.Value{Kind: value.Cond, At: test.At, Kids: []*value.Value{test, value.Text(rel, test.At), {Kind: value.Undef, At: test.At}}})
	}
}
