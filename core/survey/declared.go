package survey

import (
	"bytes"
	"path"
	"slices"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
)

// Example reports whether a file is an example of a dotenv file, or a schema
// of one: it declares variables, and sets none.
func Example(base string) bool {
	b := strings.ToLower(base)
	if !strings.Contains(b, "env") {
		return false
	}
	for _, w := range []string{"example", "sample", "template", "dist", "defaults", "schema", "tpl"} {
		for part := range strings.FieldsFuncSeq(b, func(r rune) bool { return r == '.' || r == '-' || r == '_' }) {
			if part == w {
				return !strings.HasSuffix(b, ".js") && !strings.HasSuffix(b, ".ts") && !strings.HasSuffix(b, ".py") && !strings.HasSuffix(b, ".md")
			}
		}
	}
	return false
}

// dotenvName tells dotenv files from all others.
func dotenvName(base string) bool {
	return base == ".env" || strings.HasPrefix(base, ".env.") || base == ".flaskenv" || strings.HasSuffix(base, ".env")
}

// Declarations lists the variables that files of the tree declare for a
// component: its dotenv examples, dotenv files that ship, its descriptors.
func Declarations(t *source.Tree, c *fact.Component) []fact.Declared {
	var list []fact.Declared
	dirs := []string{c.Dir}
	for d := c.Dir; d != ""; {
		d = source.Dir(d)
		dirs = append(dirs, d)
	}
	for _, sub := range []string{"config", "env", "envs", "deploy"} {
		dirs = append(dirs, c.Path(sub))
	}
	for _, dir := range dirs {
		for _, e := range t.In(dir) {
			base := path.Base(e.Path)
			if !e.OnDisk {
				continue
			}
			switch {
			case Example(base):
				if strings.HasSuffix(base, ".json") {
					list = append(list, schemaNames(t, e.Path)...)
				} else {
					list = append(list, dotenvNames(t, e.Path, "dotenv example")...)
				}
			case dotenvName(base) && t.State(e.Path) == source.Shipped:
				list = append(list, dotenvNames(t, e.Path, "dotenv file")...)
			case strings.HasSuffix(base, ".service"):
				list = append(list, unitNames(t, e.Path)...)
			case strings.HasSuffix(base, ".yml") || strings.HasSuffix(base, ".yaml"):
				list = append(list, documentNames(t, e.Path)...)
			}
		}
	}
	for _, dir := range []string{"k8s", "kubernetes", "deploy", "deployment", "manifests", "helm", "ops", "infra", ".deploy"} {
		for _, e := range t.Below(dir) {
			if e.OnDisk && (strings.HasSuffix(e.Path, ".yml") || strings.HasSuffix(e.Path, ".yaml")) && !slices.Contains(dirs, source.Dir(e.Path)) {
				list = append(list, documentNames(t, e.Path)...)
			}
		}
	}
	for _, d := range c.Descriptors {
		if d.Image != nil {
			for name := range d.Image.Env {
				list = append(list, fact.Declared{Name: name, How: "container file", Valid: ValidName(name), At: d.Image.EnvAt[name]})
			}
		}
	}
	for _, st := range c.Starts {
		for _, a := range st.Final.Env {
			if a.Gone {
				continue
			}
			list = append(list, fact.Declared{Name: a.Name, How: "start command", Valid: true, At: a.At})
		}
	}
	slices.SortStableFunc(list, func(a, b fact.Declared) int {
		if a.At == b.At {
			return strings.Compare(a.Name, b.Name)
		}
		if a.At.Before(b.At) {
			return -1
		}
		return 1
	})
	return list
}

// ValidName reports whether a shell can set a variable of this name
// (POSIX.1-2024, XBD 3.216, "Name").
func ValidName(s string) bool {
	for i := range len(s) {
		b := s[i]
		if !(b == '_' || b >= 'A' && b <= 'Z' || b >= 'a' && b <= 'z' || i > 0 && b >= '0' && b <= '9') {
			return false
		}
	}
	return s != ""
}

// dotenvNames reads the names of a dotenv file, those too that are no names.
func dotenvNames(t *source.Tree, file, how string) []fact.Declared {
	f, err := t.Code(file)
	if err != nil {
		return nil
	}
	var list []fact.Declared
	inside := map[int]bool{} // lines of values over several lines
	d := document.Dotenv(file, f.Data, f.Lines())
	for _, k := range d.Kids {
		for l := k.At().Line + 1; l <= k.At().EndLine; l++ {
			inside[l] = true
		}
	}
	for n := 1; n <= f.Lines().Count(); n++ {
		text := f.Lines().Text(n)
		line := strings.TrimLeft(text, " \t")
		line = strings.TrimLeft(strings.TrimPrefix(line, "export "), " \t")
		key, _, ok := strings.Cut(line, "=")
		key = strings.TrimRight(key, " \t")
		if !ok || inside[n] || key == "" || key[0] == '#' || strings.ContainsAny(key, "\"'") {
			continue
		}
		col := len([]rune(text)) - len([]rune(line)) + 1
		list = append(list, fact.Declared{Name: key, How: how, Valid: ValidName(key), At: place.Span{File: file, Line: n, Col: col, EndLine: n, EndCol: col + len([]rune(key))}})
	}
	return list
}

// schemaNames reads the names of a JSON Schema of the environment.
func schemaNames(t *source.Tree, file string) []fact.Declared {
	d, _ := Document(t, file)
	var list []fact.Declared
	for _, k := range d.Get("properties").Items() {
		list = append(list, fact.Declared{Name: k.Key, How: "schema", Valid: ValidName(k.Key), At: k.KeyAt()})
	}
	return list
}

// unitNames reads Environment= of systemd units (systemd.exec(5)).
func unitNames(t *source.Tree, file string) []fact.Declared {
	f, err := t.Code(file)
	if err != nil {
		return nil
	}
	var list []fact.Declared
	for n := 1; n <= f.Lines().Count(); n++ {
		text := f.Lines().Text(n)
		rest, ok := strings.CutPrefix(strings.TrimSpace(text), "Environment=")
		for ok && rest != "" {
			word := strings.TrimLeft(rest, ` "`)
			key, after, has := strings.Cut(word, "=")
			if !has {
				break
			}
			list = append(list, fact.Declared{Name: key, How: "descriptor", Valid: ValidName(key), At: place.Span{File: file, Line: n, Col: 1, EndLine: n, EndCol: len([]rune(text)) + 1}})
			if _, rest, ok = strings.Cut(after, " "); !ok {
				break
			}
		}
	}
	return list
}

// keysOfMaps are the keys under which documents hold variables (Compose
// Specification; Kubernetes API; the word that most others use).
var keysOfMaps = map[string]bool{"environment": true, "env": true, "variables": true, "vars": true, "envs": true, "env_variables": true, "data": true, "stringData": true}

// documentNames reads the names that a YAML document sets under such a key.
func documentNames(t *source.Tree, file string) []fact.Declared {
	f, err := t.Code(file)
	if err != nil || !bytes.Contains(f.Data, []byte("env")) && !bytes.Contains(f.Data, []byte("var")) && !bytes.Contains(f.Data, []byte("ata:")) {
		return nil
	}
	docs, err := document.YAML(file, f.Data, f.Lines())
	if err != nil {
		return nil
	}
	var list []fact.Declared
	add := func(name string, at place.Span) {
		if ValidName(name) && name == strings.ToUpper(name) {
			list = append(list, fact.Declared{Name: name, How: "descriptor", Valid: true, At: at})
		} else if meant(name) {
			list = append(list, fact.Declared{Name: name, How: "descriptor", At: at})
		}
	}
	var walk func(n *document.Node, depth int)
	walk = func(n *document.Node, depth int) {
		if n == nil || depth > 24 || len(list) > 2000 {
			return
		}
		if keysOfMaps[n.Key] {
			for _, k := range n.Items() {
				switch {
				case k.Key != "":
					if n.Key == "data" && !ValidName(k.Key) {
						continue // a file of a ConfigMap
					}
					add(k.Key, k.KeyAt())
				case k.Get("name") != nil:
					add(k.Get("name").Str(), k.Get("name").At())
				default:
					name, _, _ := strings.Cut(k.Str(), "=")
					add(name, k.At())
				}
			}
		}
		for _, k := range n.Items() {
			walk(k, depth+1)
		}
	}
	for _, d := range docs {
		walk(d, 0)
	}
	return list
}

// meant reports whether a name that no variable can have was written as one: in capitals,
// with a hyphen or a space between, or a digit in front. Names in small letters with dots
// are settings that some programs take from their environment by themselves.
func meant(name string) bool {
	if ValidName(name) || name != strings.ToUpper(name) || name == strings.ToLower(name) {
		return false
	}
	return strings.Trim(name, "ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_- ") == ""
}

// ambient are variables that the operating system, the shell, the runtime or
// CI sets (POSIX.1-2024, XBD 8; the runtimes' manuals; read 2026-11).
var ambient = words(`PATH HOME USER LOGNAME SHELL PWD OLDPWD LANG LANGUAGE LC_ALL LC_CTYPE TZ TERM TMPDIR TMP TEMP HOSTNAME HOST_NAME MAIL EDITOR VISUAL PAGER DISPLAY COLUMNS LINES SHLVL _ UID
	XDG_CONFIG_HOME XDG_DATA_HOME XDG_CACHE_HOME XDG_RUNTIME_DIR CI NO_COLOR FORCE_COLOR COLORTERM
	HTTP_PROXY HTTPS_PROXY NO_PROXY http_proxy https_proxy no_proxy SSL_CERT_FILE SSL_CERT_DIR
	APPDATA LOCALAPPDATA USERPROFILE SystemRoot WINDIR windir ComSpec PROGRAMFILES USERNAME COMPUTERNAME OS
	NODE_ENV NODE_OPTIONS NODE_PATH INIT_CWD VIRTUAL_ENV PYTHONPATH PYTHONUNBUFFERED PYTHONHOME CONDA_PREFIX GOPATH GOROOT GOMAXPROCS GODEBUG GEM_HOME GEM_PATH BUNDLE_GEMFILE RUBYLIB RUBYOPT JAVA_HOME
	CARGO_MANIFEST_DIR CARGO_PKG_VERSION CARGO_PKG_NAME OUT_DIR RELEASE_NAME RELEASE_VSN RELEASE_ROOT DOTNET_RUNNING_IN_CONTAINER KUBERNETES_SERVICE_HOST KUBERNETES_SERVICE_PORT POD_NAME LISTEN_FDS LISTEN_PID NOTIFY_SOCKET INVOCATION_ID
	RACK_ENV RAILS_ENV MIX_ENV APP_ENV FLASK_ENV FLASK_DEBUG FLASK_APP DJANGO_SETTINGS_MODULE ASPNETCORE_ENVIRONMENT DOTNET_ENVIRONMENT SPRING_PROFILES_ACTIVE NODE_APP_INSTANCE WEB_CONCURRENCY WERKZEUG_RUN_MAIN RUN_MAIN`)

// Ambient reports whether something else than the host's user sets a variable.
func Ambient(name string) bool {
	if ambient[name] {
		return true
	}
	for _, p := range []string{"npm_", "LC_", "CI_", "CARGO_PKG_", "XDG_", "SUDO_"} {
		if strings.HasPrefix(name, p) {
			return true
		}
	}
	return false
}

// consumed are beginnings of names that runtimes, frameworks, servers, database
// clients and build tools read by themselves (their manuals, 2026-11).
var consumed = []string{
	"NODE_", "NPM_", "YARN_", "PNPM_", "COREPACK_", "UV_", "BUN_", "DENO_", "VITE_", "NEXT_", "NUXT_", "NITRO_", "REACT_APP_", "PUBLIC_", "SVELTE_", "ASTRO_", "NG_", "GATSBY_", "PRISMA_", "TURBO_", "NX_",
	"PYTHON", "PIP_", "POETRY_", "PDM_", "UVICORN_", "GUNICORN_", "HYPERCORN_", "FLASK_", "DJANGO_", "CELERY_", "QUART_", "STREAMLIT_", "FORWARDED_ALLOW_IPS", "WEB_CONCURRENCY", "UWSGI_", "ALEMBIC_",
	"RAILS_", "RACK_", "BUNDLE_", "GEM_", "RUBY", "PUMA_", "SECRET_KEY_BASE", "MALLOC_", "SIDEKIQ_",
	"JAVA_", "JDK_", "MAVEN_", "GRADLE_", "SPRING_", "MANAGEMENT_", "LOGGING_", "QUARKUS_", "MICRONAUT_", "KTOR_",
	"CGO_", "GIN_MODE", "PHP_", "COMPOSER_", "SYMFONY_", "LARAVEL_", "DOTNET_", "ASPNETCORE_", "Logging__", "ConnectionStrings__", "Kestrel__", "NUGET_", "RUST_", "CARGO_", "ROCKET_", "MIX_", "PHX_", "RELEASE_", "ERL_", "ELIXIR_", "ECTO_",
	"PG", "POSTGRES_", "MYSQL_", "MARIADB_", "MONGO_INITDB_", "REDIS_ARGS", "RABBITMQ_", "OTEL_", "DEBUG", "TZ", "LD_", "DEBIAN_FRONTEND", "COMPOSE_", "DOCKER_", "BUILDKIT_", "HOST", "PORT", "HOSTNAME",
}

// Consumed reports whether a name may be read by something else than the
// code of the tree.
func Consumed(name string) bool {
	if Ambient(name) {
		return true
	}
	for _, p := range consumed {
		beginning := strings.HasSuffix(p, "_") || p == "PYTHON" || p == "RUBY" || p == "PG"
		if name == p || beginning && strings.HasPrefix(name, p) {
			return true
		}
	}
	return false
}

// passive are endings of files that read nothing: a mention there is no use.
var passive = map[string]bool{".md": true, ".rst": true, ".txt": true, ".adoc": true, ".lock": true, ".png": true, ".jpg": true, ".svg": true, ".css": true, ".html": true, ".map": true, ".csv": true, ".pdf": true}

// Mentioned reports whether a file of the component that may read variables
// holds a name, in any letter case, whole or without its prefix where the code
// works with prefixes.
func Mentioned(t *source.Tree, c *fact.Component, name string) bool {
	needle := []byte(strings.ToLower(name))
	camel := []byte(strings.ToLower(strings.ReplaceAll(name, "_", "")))
	_, rest, cut := strings.Cut(name, "_")
	tail := []byte(strings.ToLower(rest))
	found, prefixed, tailed, gathers := false, false, false, false
	// A name may be put together of two texts, cut at one of its underscores:
	// which of them have been seen.
	type cutAt struct{ front, back, head, rest bool }
	cuts := make([]cutAt, len(needle))
	for _, e := range t.Below(c.Dir) {
		base := path.Base(e.Path)
		if found || !e.OnDisk || passive[path.Ext(base)] || Example(base) || dotenvName(base) || e.Size > source.CodeLimit {
			continue
		}
		if _, _, dep := source.DependencyPath(e.Path); dep {
			continue
		}
		f, err := t.Code(e.Path)
		if err != nil {
			continue
		}
		low := bytes.ToLower(f.Data)
		found = whole(low, needle) || whole(low, camel)
		for i, b := range needle {
			if b != '_' || i == 0 || i > len(needle)-3 {
				continue
			}
			x := &cuts[i]
			x.front = x.front || edged(low, needle[:i+1], false)
			x.back = x.back || edged(low, needle[i:], true)
			x.head = x.head || whole(low, needle[:i])
			x.rest = x.rest || whole(low, needle[i+1:])
			found = found || x.front && x.rest || x.back && x.head
		}
		prefixed = prefixed || bytes.Contains(low, []byte("prefix"))
		gathers = gathers || slices.ContainsFunc(gathering, func(w string) bool { return bytes.Contains(low, []byte(w)) })
		tailed = tailed || cut && len(tail) > 2 && (whole(low, tail) || whole(low, bytes.ReplaceAll(tail, []byte("_"), nil)))
	}
	return found || prefixed && tailed || gathers && slices.ContainsFunc(cuts, func(x cutAt) bool { return x.front })
}

// gathering is how code goes through the whole environment, in lower case: a name that
// begins with a text of that code may be among what it takes.
var gathering = []string{"environ.items", "environ.keys", "environ.copy", "in os.environ", "in environ", "object.entries(process.env", "object.keys(process.env", "in process.env", "entries(env", "keys(env",
	"env.each", "env.select", "env.filter_map", "env.to_h", "env.find_all", "env.keys", "env.to_a", "env.reduce", "os.environ()", "system.getenv()", "env.toobject", "getenv()", "vars()"}

// edged reports whether a text holds a piece of a name that something is put to:
// in front of it where before is set, else behind it.
func edged(text, piece []byte, before bool) bool {
	for off := 0; ; {
		i := bytes.Index(text[off:], piece)
		if i < 0 {
			return false
		}
		i += off
		at := i + len(piece)
		if before {
			at = i - 1
		}
		if at < 0 || at >= len(text) || bytes.IndexByte([]byte("\"'`{}$#%"), text[at]) >= 0 {
			return true
		}
		off = i + 1
	}
}

// whole reports whether a text holds a word as a whole.
func whole(text, word []byte) bool {
	letter := func(b byte) bool {
		return b == '_' || b >= '0' && b <= '9' || b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z'
	}
	for off := 0; ; {
		i := bytes.Index(text[off:], word)
		if i < 0 {
			return false
		}
		i += off
		end := i + len(word)
		if (i == 0 || !letter(text[i-1])) && (end == len(text) || !letter(text[end])) {
			return true
		}
		off = i + 1
	}
}
