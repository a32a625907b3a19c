package lock

import (
	"strconv"
	"strings"
)

// maxDepth is how deep objects may lie in each other.
const maxDepth = 100

// walker goes through JSON, also with comments and commas at the end, and
// tells each scalar with the keys that lead to it. It makes no tree and stops
// at the first thing that it does not understand.
type walker struct {
	text  string
	pos   int
	path  []string
	visit func(path []string, text string, off int)
	open  func(path []string, off int)
	bad   bool
}

// walk tells each scalar of a JSON text; open, where set, is told of each
// object below another. It reports whether the text could be read to its end.
func walk(data []byte, visit func(path []string, text string, off int), open func(path []string, off int)) bool {
	w := &walker{text: string(data), visit: visit, open: open}
	w.text = strings.TrimPrefix(w.text, "\ufeff")
	w.value(0)
	w.space()
	return !w.bad && w.pos == len(w.text)
}

func (w *walker) space() {
	for w.pos < len(w.text) {
		switch c := w.text[w.pos]; {
		case c == ' ' || c == '\n' || c == '\t' || c == '\r':
			w.pos++
		case c == '/' && strings.HasPrefix(w.text[w.pos:], "//"):
			if i := strings.IndexByte(w.text[w.pos:], '\n'); i >= 0 {
				w.pos += i
			} else {
				w.pos = len(w.text)
			}
		case c == '/' && strings.HasPrefix(w.text[w.pos:], "/*"):
			if i := strings.Index(w.text[w.pos+2:], "*/"); i >= 0 {
				w.pos += i + 4
			} else {
				w.pos = len(w.text)
			}
		default:
			return
		}
	}
}

// str reads a quoted text.
func (w *walker) str() string {
	start := w.pos + 1
	escaped := false
	for i := start; i < len(w.text); i++ {
		switch w.text[i] {
		case '\\':
			escaped = true
			i++
		case '"':
			w.pos = i + 1
			if !escaped {
				return w.text[start:i]
			}
			s, err := strconv.Unquote(strings.ReplaceAll(w.text[start-1:i+1], `\/`, "/"))
			if err != nil {
				return w.text[start:i]
			}
			return s
		case '\n':
			w.bad, w.pos = true, len(w.text)
			return ""
		}
	}
	w.bad, w.pos = true, len(w.text)
	return ""
}

func (w *walker) value(depth int) {
	w.space()
	if w.pos >= len(w.text) || depth > maxDepth || w.bad {
		w.bad, w.pos = true, len(w.text)
		return
	}
	off := w.pos
	switch c := w.text[w.pos]; c {
	case '{':
		if w.open != nil {
			w.open(w.path, off)
		}
		w.pos++
		for {
			w.space()
			if w.pos < len(w.text) && w.text[w.pos] == ',' {
				w.pos++
				continue
			}
			if w.pos >= len(w.text) || w.text[w.pos] != '"' {
				break
			}
			key := w.str()
			w.space()
			if w.pos >= len(w.text) || w.text[w.pos] != ':' {
				w.bad, w.pos = true, len(w.text)
				return
			}
			w.pos++
			w.path = append(w.path, key)
			w.value(depth + 1)
			w.path = w.path[:len(w.path)-1]
			if w.bad {
				return
			}
		}
		w.close('}')
	case '[':
		w.pos++
		for n := 0; ; n++ {
			w.space()
			if w.pos < len(w.text) && w.text[w.pos] == ',' {
				w.pos++
				w.space()
			}
			if w.pos >= len(w.text) || w.text[w.pos] == ']' {
				break
			}
			w.path = append(w.path, index(n))
			w.value(depth + 1)
			w.path = w.path[:len(w.path)-1]
			if w.bad {
				return
			}
		}
		w.close(']')
	case '"':
		w.visit(w.path, w.str(), off)
	default:
		for w.pos < len(w.text) && (c == '-' || c == '+' || c == '.' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z') {
			if w.pos++; w.pos < len(w.text) {
				c = w.text[w.pos]
			}
		}
		if w.pos == off {
			w.bad, w.pos = true, len(w.text)
			return
		}
		w.visit(w.path, w.text[off:w.pos], off)
	}
}

func (w *walker) close(c byte) {
	if w.pos >= len(w.text) || w.text[w.pos] != c {
		w.bad, w.pos = true, len(w.text)
		return
	}
	w.pos++
}

// index names a place of a list; the first few need no new text.
func index(n int) string {
	if n < 10 {
		return "0123456789"[n : n+1]
	}
	return strconv.Itoa(n)
}

// npm reads package-lock.json and npm-shrinkwrap.json, versions 1 to 3 of the
// format (npm documentation, "package-lock.json").
func npm(l *Lock, data []byte) {
	at := map[string]int{} // by key: the package
	tree := map[string]int{}
	ok := walk(data, func(p []string, text string, off int) {
		switch {
		case len(p) == 1 && p[0] == "lockfileVersion":
			l.Format = text
		case len(p) == 4 && p[0] == "packages" && (p[2] == "dependencies" || p[2] == "devDependencies" || p[2] == "optionalDependencies") && !strings.Contains(p[1], "node_modules/"):
			l.ask(p[1], p[3], text)
		case len(p) == 3 && p[0] == "packages":
			i, known := at[p[1]]
			if !known {
				return
			}
			set(&l.Packages[i], p[2], text)
		case len(p) == 3 && p[0] == "dependencies":
			if i, known := tree[p[1]]; known {
				set(&l.Packages[i], p[2], text)
			}
		}
	}, func(p []string, off int) {
		switch {
		case len(p) == 2 && p[0] == "packages":
			i := strings.LastIndex(p[1], "node_modules/")
			if i < 0 {
				return
			}
			dir := strings.TrimSuffix(p[1][:i], "/")
			if strings.Contains(dir, "node_modules") {
				return // a package's own
			}
			at[p[1]] = len(l.Packages)
			l.Packages = append(l.Packages, Package{Name: p[1][i+len("node_modules/"):], Dir: dir, Off: off})
		case len(p) == 2 && p[0] == "dependencies":
			tree[p[1]] = len(l.Packages)
			l.Packages = append(l.Packages, Package{Name: p[1], Off: off})
		}
	})
	if len(at) > 0 && len(tree) > 0 { // version 2 has both: the old one says no more
		var list []Package
		for i, p := range l.Packages {
			if j, old := tree[p.Name]; !old || j != i {
				list = append(list, p)
			}
		}
		l.Packages = list
	}
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}

func set(p *Package, key, text string) {
	switch key {
	case "version":
		p.Version = text
		p.Local = p.Local || strings.HasPrefix(text, "file:")
	case "dev", "devOptional":
		p.Dev = p.Dev || text == "true" && key == "dev"
	case "link":
		p.Local = text == "true"
	}
}

// bun reads bun.lock (Bun documentation, "Lockfile").
func bun(l *Lock, data []byte) {
	ok := walk(data, func(p []string, text string, off int) {
		switch {
		case len(p) == 1 && p[0] == "lockfileVersion":
			l.Format = text
		case len(p) == 4 && p[0] == "workspaces" && strings.HasSuffix(strings.ToLower(p[2]), "dependencies"):
			l.ask(p[1], p[3], text)
		case len(p) == 3 && p[0] == "packages" && p[2] == "0" && !strings.Contains(strings.TrimPrefix(p[1], "@"), "/") || len(p) == 3 && p[0] == "packages" && p[2] == "0" && strings.HasPrefix(p[1], "@") && strings.Count(p[1], "/") == 1:
			name, ver := split(text)
			l.Packages = append(l.Packages, Package{Name: p[1], Version: ver, Local: strings.HasPrefix(ver, "workspace:"), Off: off})
			_ = name
		}
	}, nil)
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}

// split cuts name@version at the last sign; scopes begin with one too.
func split(s string) (name, ver string) {
	if i := strings.LastIndexByte(s, '@'); i > 0 {
		return s[:i], s[i+1:]
	}
	return s, ""
}

// deno reads deno.lock, versions 3 to 5 of the format: what each specifier
// came to.
func deno(l *Lock, data []byte) {
	ok := walk(data, func(p []string, text string, off int) {
		switch {
		case len(p) == 1 && p[0] == "version":
			l.Format = text
		case len(p) == 2 && p[0] == "specifiers", len(p) == 3 && p[0] == "packages" && p[1] == "specifiers":
			name, spec := split(p[len(p)-1])
			ver, _, _ := strings.Cut(text, "_")
			if strings.Contains(ver, ":") {
				_, ver = split(ver)
			}
			l.ask("", name, spec)
			l.Packages = append(l.Packages, Package{Name: name, Version: ver, Off: off})
		}
	}, nil)
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}

// pipenv reads Pipfile.lock.
func pipenv(l *Lock, data []byte) {
	last := -1
	ok := walk(data, func(p []string, text string, _ int) {
		if len(p) == 3 && p[2] == "version" && last >= 0 {
			l.Packages[last].Version = strings.TrimPrefix(text, "==")
		}
		if len(p) == 4 && p[0] == "_meta" && p[2] == "python_version" || len(p) == 3 && p[0] == "_meta" && p[2] == "python_version" {
			l.Runtime = text
		}
	}, func(p []string, off int) {
		if len(p) == 2 && (p[0] == "default" || p[0] == "develop") {
			last = len(l.Packages)
			l.Packages = append(l.Packages, Package{Name: Normal(p[1]), Dev: p[0] == "develop", Off: off})
		}
	})
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}

// composer reads composer.lock (Composer documentation, "composer.lock").
func composer(l *Lock, data []byte) {
	last := ""
	ok := walk(data, func(p []string, text string, off int) {
		if len(p) != 3 || p[0] != "packages" && p[0] != "packages-dev" {
			return
		}
		switch p[2] {
		case "name":
			last = p[0] + p[1]
			l.Packages = append(l.Packages, Package{Name: strings.ToLower(text), Dev: p[0] == "packages-dev", Off: off})
		case "version":
			if n := len(l.Packages); n > 0 && last == p[0]+p[1] {
				l.Packages[n-1].Version = text
			}
		}
	}, nil)
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}

// nuget reads packages.lock.json (NuGet documentation, "Locking
// dependencies").
func nuget(l *Lock, data []byte) {
	last := -1
	ok := walk(data, func(p []string, text string, _ int) {
		if len(p) == 1 && p[0] == "version" {
			l.Format = text
		}
		if len(p) == 4 && p[0] == "dependencies" && last >= 0 {
			switch p[3] {
			case "resolved":
				l.Packages[last].Version = text
			case "requested":
				l.ask("", l.Packages[last].Name, text)
			case "type":
				l.Packages[last].Local = text == "Project"
			}
		}
	}, func(p []string, off int) {
		if len(p) == 3 && p[0] == "dependencies" {
			last = len(l.Packages)
			l.Packages = append(l.Packages, Package{Name: strings.ToLower(p[2]), Off: off})
		}
	})
	if !ok {
		l.Problem = "it is not valid JSON"
	}
}
