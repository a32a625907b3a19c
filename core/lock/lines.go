package lock

import "strings"

// yarn reads yarn.lock, of Yarn 1 (its own form) and of later ones (YAML with
// a __metadata block).
func yarn(l *Lock, data []byte) {
	var open []int
	meta := false
	lines(data, func(off int, line string) {
		switch {
		case line == "" || line[0] == '#':
		case line[0] != ' ':
			open = open[:0]
			if meta = strings.HasPrefix(line, "__metadata"); meta {
				return
			}
			keys := strings.TrimSuffix(strings.TrimSpace(line), ":")
			if len(keys) > 1 && keys[0] == '"' && strings.Count(keys, `"`) == 2 {
				keys = bare(keys)
			}
			seen := ""
			for key := range strings.SplitSeq(keys, ", ") {
				key = bare(key)
				at := strings.Index(key[min(1, len(key)):], "@")
				if at < 0 {
					continue
				}
				name, spec := key[:at+1], key[at+2:]
				l.ask("", name, strings.TrimPrefix(spec, "npm:"))
				if name != seen {
					seen = name
					open = append(open, len(l.Packages))
					l.Packages = append(l.Packages, Package{Name: name, Off: off, Local: strings.HasPrefix(spec, "workspace:") || strings.HasPrefix(spec, "link:") || strings.HasPrefix(spec, "file:")})
				}
			}
			if l.Format == "" {
				l.Format = "1"
			}
		default:
			key, val, _ := strings.Cut(strings.TrimSpace(line), " ")
			key = strings.TrimSuffix(key, ":")
			if meta && key == "version" {
				l.Format = "berry " + bare(val)
			}
			if key == "version" && indent(line) == 2 {
				for _, i := range open {
					l.Packages[i].Version = bare(val)
				}
			}
		}
	})
}

// pnpm reads pnpm-lock.yaml, versions 5 to 9 of the format. It is YAML of one
// fixed shape, and read by its indentation.
func pnpm(l *Lock, data []byte) {
	top, dir, section, name := "", "", "", ""
	dev := map[string]bool{}
	at := -1
	resolved := func(name, ver string, off int) {
		ver, _, _ = strings.Cut(ver, "(")
		if i := strings.IndexByte(ver, '_'); i > 0 {
			ver = ver[:i]
		}
		local := strings.HasPrefix(ver, "link:") || strings.HasPrefix(ver, "file:")
		if i := strings.LastIndexByte(ver, '@'); i > 0 && !local { // an alias: name@version
			ver = ver[i+1:]
		}
		if i := strings.LastIndexByte(ver, '/'); i >= 0 && !local {
			ver = ver[i+1:]
		}
		l.Packages = append(l.Packages, Package{Name: name, Version: ver, Dir: dir, Dev: section == "devDependencies", Local: local, Off: off})
	}
	// entry takes one line of a section: n is how deep the names stand.
	entry := func(off int, line string, n int) {
		key, val, ok := strings.Cut(strings.TrimSpace(line), ": ")
		key, val = bare(strings.TrimSuffix(key, ":")), bare(val)
		switch {
		case indent(line) == n && section == "specifiers":
			l.ask(dir, key, val)
		case indent(line) == n && ok:
			resolved(key, val, off)
		case indent(line) == n:
			name = key
			at = off
		case key == "specifier":
			l.ask(dir, name, val)
		case key == "version":
			resolved(name, val, at)
		}
	}
	sections := " dependencies devDependencies optionalDependencies specifiers "
	lines(data, func(off int, line string) {
		if strings.TrimSpace(line) == "" || strings.HasPrefix(line, "#") {
			return
		}
		n := indent(line)
		key := bare(strings.TrimSuffix(strings.TrimSpace(line), ":"))
		switch {
		case n == 0:
			k, v, _ := strings.Cut(line, ":")
			top, dir, section = k, "", ""
			if k == "lockfileVersion" {
				l.Format = bare(v)
			}
			if strings.Contains(sections, " "+k+" ") {
				section = k
			}
		case top == "importers" && n == 2:
			dir, section = strings.TrimPrefix(strings.TrimSuffix(key, " {}"), "./"), ""
			if dir == "." {
				dir = ""
			}
		case top == "importers" && n == 4:
			section = ""
			if strings.Contains(sections, " "+key+" ") {
				section = key
			}
		case top == "importers" && section != "":
			entry(off, line, 6)
		case strings.Contains(sections, " "+top+" "):
			entry(off, line, 2)
		case (top == "packages" || top == "snapshots") && n == 2:
			name = strings.TrimPrefix(key, "/")
		case top == "packages" && n == 4 && key == "dev: true":
			dev[name] = true
		}
	})
	if l.Format == "" {
		l.Problem = "it has no lockfileVersion"
	}
}

// tables reads locks that are lists of [[package]] tables: poetry.lock,
// uv.lock, pdm.lock, Cargo.lock.
func tables(l *Lock, data []byte) {
	in := false
	l.Hashed = false
	lines(data, func(off int, line string) {
		s := strings.TrimSpace(line)
		switch {
		case s == "[[package]]":
			in = true
			l.Packages = append(l.Packages, Package{Off: off})
			return
		case strings.HasPrefix(s, "["):
			in = false
			return
		}
		key, val, ok := strings.Cut(s, "=")
		if !ok {
			return
		}
		key, val = strings.TrimSpace(key), strings.TrimSpace(val)
		if len(l.Packages) == 0 || !in {
			switch {
			case key == "version" && len(l.Packages) == 0, key == "lock-version", key == "lock_version":
				l.Format = bare(val)
			case key == "requires-python" && l.Runtime == "", key == "python-versions" && l.Runtime == "":
				l.Runtime, l.RuntimeOff = bare(val), off
			}
			return
		}
		p := &l.Packages[len(l.Packages)-1]
		switch key {
		case "name":
			p.Name = bare(val)
			if l.Manager != "cargo" {
				p.Name = Normal(p.Name)
			}
		case "version":
			p.Version = bare(val)
		case "category":
			p.Dev = bare(val) == "dev"
		case "groups":
			p.Dev = !strings.Contains(val, `"main"`) && !strings.Contains(val, `"default"`)
		case "source":
			if strings.Contains(val, "editable =") || strings.Contains(val, "virtual =") || strings.Contains(val, "directory =") {
				p.Local = true
			}
		}
	})
	if l.Manager == "cargo" { // a member of the workspace has no source
		return
	}
}

// pylock reads pylock.toml (PEP 751).
func pylock(l *Lock, data []byte) {
	in := false
	lines(data, func(off int, line string) {
		s := strings.TrimSpace(line)
		key, val, _ := strings.Cut(s, "=")
		switch key = strings.TrimSpace(key); {
		case s == "[[packages]]":
			in = true
			l.Packages = append(l.Packages, Package{Off: off})
		case strings.HasPrefix(s, "["):
			in = false
		case key == "requires-python":
			l.Runtime, l.RuntimeOff = bare(val), off
		case in && key == "name":
			l.Packages[len(l.Packages)-1].Name = Normal(bare(val))
		case in && key == "version":
			l.Packages[len(l.Packages)-1].Version = bare(val)
		}
	})
}

// bundler reads Gemfile.lock (Bundler documentation, "bundle lock").
func bundler(l *Lock, data []byte) {
	part, source := "", ""
	lines(data, func(off int, line string) {
		n := indent(line)
		s := strings.TrimSpace(line)
		if s == "" {
			return
		}
		if n == 0 {
			part = s
			if part == "GEM" || part == "GIT" || part == "PATH" {
				source = part
			}
			return
		}
		name, ver, _ := strings.Cut(s, " ")
		ver = strings.TrimSuffix(strings.TrimPrefix(ver, "("), ")")
		switch {
		case (part == "GEM" || part == "GIT" || part == "PATH") && n == 4:
			// nokogiri (1.18.1-x86_64-linux-gnu): the platform is no part of it.
			if i := strings.IndexByte(ver, '-'); i > 0 {
				ver = ver[:i]
			}
			l.Packages = append(l.Packages, Package{Name: name, Version: ver, Local: source == "PATH", Off: off + n})
		case part == "PLATFORMS":
			if len(l.Platforms) == 0 {
				l.PlatformsOff = off + n
			}
			l.Platforms = append(l.Platforms, s)
		case part == "DEPENDENCIES":
			l.ask("", strings.TrimSuffix(name, "!"), strings.TrimSuffix(strings.TrimSuffix(ver, "!"), ")"))
		case part == "RUBY VERSION":
			l.Runtime, l.RuntimeOff = strings.TrimPrefix(s, "ruby "), off+n
		case part == "BUNDLED WITH":
			l.Tool = s
		}
	})
}

// goSum reads go.sum (Go modules reference, "go.sum files"). Versions of one
// module stand beside each other; hashes of go.mod files alone do not count as
// the module itself.
func goSum(l *Lock, data []byte) {
	lines(data, func(off int, line string) {
		f := strings.Fields(line)
		if len(f) != 3 {
			return
		}
		ver, only := strings.CutSuffix(f[1], "/go.mod")
		if n := len(l.Packages); n > 0 && l.Packages[n-1].Name == f[0] && l.Packages[n-1].Version == ver {
			l.Packages[n-1].Dev = l.Packages[n-1].Dev && only
			return
		}
		l.Packages = append(l.Packages, Package{Name: f[0], Version: ver, Dev: only, Off: off})
	})
}

// gradle reads gradle.lockfile (Gradle documentation, "Locking versions").
func gradle(l *Lock, data []byte) {
	lines(data, func(off int, line string) {
		coordinate, _, _ := strings.Cut(line, "=")
		f := strings.Split(coordinate, ":")
		if strings.HasPrefix(line, "#") || len(f) != 3 {
			return
		}
		l.Packages = append(l.Packages, Package{Name: f[0] + ":" + f[1], Version: f[2], Off: off})
	})
}

// mix reads mix.lock, a map of Elixir with one entry a line.
func mix(l *Lock, data []byte) {
	lines(data, func(off int, line string) {
		s := strings.TrimSpace(line)
		if !strings.HasPrefix(s, `"`) {
			return
		}
		name, rest, ok := strings.Cut(s[1:], `"`)
		if !ok {
			return
		}
		p := Package{Name: name, Off: off + indent(line)}
		rest = strings.TrimLeft(rest, ": ")
		if strings.HasPrefix(rest, "{:hex") {
			if f := strings.SplitN(rest, ",", 4); len(f) > 2 {
				p.Version = bare(f[2])
			}
		} else {
			p.Local = true
		}
		l.Packages = append(l.Packages, p)
	})
}
