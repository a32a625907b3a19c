package survey

import (
	"path"
	"strings"

	"ubique/core/command"
	"ubique/core/source"
)

// managers are programs that belong to a runtime without being one that
// serves (their own documentation).
var managers = map[string]string{"npm": "node", "npx": "node", "yarn": "node", "pnpm": "node", "pip": "python", "pip3": "python", "poetry": "python", "pipenv": "python", "uv": "python", "pdm": "python",
	"bundle": "ruby", "gem": "ruby", "bundler": "ruby", "composer": "php", "mvn": "java", "mvnw": "java", "gradle": "java", "gradlew": "java", "golang": "go", "aspnet": "dotnet", "sdk": "dotnet", "openjdk": "java", "eclipse-temurin": "java", "rails": "ruby", "artisan": "php"}

// makers run targets of a file: their arguments are no programs.
var makers = map[string]bool{"make": true, "gmake": true, "just": true, "rake": true}

// Hinted says whether a folder's process file or container file names a
// program or a base image of a runtime. A descriptor that names none of any
// runtime hints at all of them. It is a cheap look, before a component is
// made of the folder; what the descriptors say is read later.
func Hinted(t *source.Tree, f Folder, runtime string) bool {
	any, mine := false, false
	for _, name := range []string{"Procfile", "Dockerfile", "Containerfile"} {
		if !f.Has(name) {
			continue
		}
		p := name
		if f.Dir != "" {
			p = f.Dir + "/" + name
		}
		file, err := t.Code(p)
		if err != nil {
			continue
		}
		for line := range strings.SplitSeq(string(file.Data), "\n") {
			if strings.HasPrefix(strings.TrimSpace(line), "#") {
				continue
			}
			for _, w := range strings.FieldsFunc(line, func(r rune) bool { return strings.ContainsRune(" \t\"'[],;&|()", r) }) {
				if makers[path.Base(w)] { // what follows are targets
					break
				}
				r := runtimeOf(w)
				if r == "bun" {
					r = "node"
				}
				any = any || r != ""
				mine = mine || r == runtime
			}
		}
	}
	return mine || !any
}

// sources are the endings of the files that a runtime starts as they are.
var sources = map[string]string{"node": " .js .mjs .cjs .ts .mts .cts ", "bun": " .js .mjs .cjs .ts .mts .tsx .jsx ", "deno": " .js .mjs .ts .mts .tsx .jsx ", "python": " .py ", "ruby": " .rb .ru ", "php": " .php ", "java": " .java ", "go": " .go ", "elixir": " .exs "}

// StartedBy gives the runtime that a folder's process file or container file
// starts with a source file of the folder; empty for none. It finds what has
// no manifest: a server in one file.
func StartedBy(t *source.Tree, f Folder) string {
	for _, name := range []string{"Procfile", "Dockerfile", "Containerfile"} {
		if !f.Has(name) {
			continue
		}
		starts := func(line string) bool {
			return name == "Procfile" || strings.HasPrefix(strings.ToUpper(line), "CMD") || strings.HasPrefix(strings.ToUpper(line), "ENTRYPOINT")
		}
		if r := startedIn(t, f, Join(f.Dir, name), starts, 0); r != "" {
			return r
		}
	}
	return ""
}

// startedIn looks into the lines of a file that start something, and into the
// scripts and the Makefile that they run.
func startedIn(t *source.Tree, f Folder, name string, starts func(line string) bool, depth int) string {
	file, err := t.Code(name)
	if err != nil || depth > 2 {
		return ""
	}
	any := func(string) bool { return true }
	for line := range strings.SplitSeq(string(file.Data), "\n") {
		line = strings.TrimSpace(line)
		if strings.HasPrefix(line, "#") || !starts(line) {
			continue
		}
		runtime, last, program := "", "", ""
		dirs := []string{"", "src"} // in which modules are looked for
		in := f.Dir                 // where the command runs
		first := true               // the first word behind the interpreter that is no flag
		for _, w := range strings.FieldsFunc(line, func(r rune) bool { return strings.ContainsRune(" \t\"'[],;&|()", r) }) {
			if runtime == "" && makers[path.Base(w)] {
				for _, m := range command.MakeNames {
					if f.Has(m) {
						return startedIn(t, f, Join(f.Dir, m), any, depth+1)
					}
				}
				break
			}
			if script := path.Clean(strings.TrimPrefix(w, "./")); runtime == "" && (path.Ext(w) == ".sh" || command.Shells[path.Base(last)]) && t.Has(Join(f.Dir, script)) {
				if r := startedIn(t, f, Join(f.Dir, script), any, depth+1); r != "" {
					return r
				}
			} else if runtime == "" && path.Ext(w) == "" && strings.Contains(w, "/") && t.Has(Join(f.Dir, script)) {
				program := interpreter(t, Join(f.Dir, script))
				if r := runtimeOf(program); r != "" {
					return strings.Replace(r, "bun", "node", 1)
				}
				if command.Shells[program] {
					if r := startedIn(t, f, Join(f.Dir, script), any, depth+1); r != "" {
						return r
					}
				}
			}
			if runtime == "" && last == "cd" {
				if p, ok := source.Join(in, w); ok && t.HasDir(p) {
					in = p
				}
			}
			if runtime == "" {
				w = strings.TrimLeft(w, "@+-") // of a recipe
				if runtime = runtimeOf(w); fileServers[path.Base(w)] {
					return runtime
				}
				last, program = w, path.Base(w)
				continue
			}
			if strings.HasPrefix(w, "$") && depth > 0 { // of a folder that the script works out
				w = strings.TrimPrefix(ending(t, f.Dir, w), Join(in, "")+"/")
			}
			if flag, dir, _ := strings.Cut(w, "="); flag == "--chdir" || flag == "--app-dir" {
				dirs = append(dirs, dir)
			} else if last == "--chdir" || last == "--app-dir" {
				dirs = append(dirs, w)
			}
			if p := command.Lookup(program); p != nil && strings.Contains(command.Inlines[p.Name], " "+w+" ") { // the program stands behind it
				return strings.Replace(runtime, "bun", "node", 1)
			}
			if strings.HasPrefix(w, "<<") && command.Inlines[runtime] != "" { // in the lines below it
				return strings.Replace(runtime, "bun", "node", 1)
			}
			if runtime == "ruby" && w == "-run" { // the server of files that Ruby comes with
				return runtime
			}
			known := command.Lookup(program)
			if runtime == "python" && (last == "-m" || strings.Contains(w, ":") || known != nil && known.Target == command.CallableTarget && !strings.HasPrefix(w, "-")) && module(t, f, w, dirs) {
				return runtime
			}
			if runtime == "python" && first && t.Has(Join(Join(in, path.Clean(w)), "__main__.py")) {
				return runtime
			}
			if runtime == "java" && class(t, f, w) {
				return runtime
			}
			last = w
			if end := path.Ext(w); (end == "" && (strings.Contains(w, "/") || first) || end != "" && strings.Contains(sources[runtime], " "+end+" ")) && t.Has(Join(in, path.Clean(strings.TrimPrefix(w, "./")))) {
				if runtime == "bun" {
					return "node"
				}
				return runtime
			}
			first = first && strings.HasPrefix(w, "-")
		}
	}
	return ""
}

// ending is the file of a folder or below whose path ends as a word does behind a
// variable, "$HERE/app.js", or the word.
func ending(t *source.Tree, dir, w string) string {
	if _, tail, ok := strings.Cut(w, "/"); ok && tail != "" {
		for _, e := range t.Below(dir) {
			if e.OnDisk && (e.Path == tail || strings.HasSuffix(e.Path, "/"+tail)) {
				return e.Path
			}
		}
	}
	return w
}

// interpreter is the program that the first line of a script names; empty where it is
// none (POSIX.1-2024, "Shell Command Language"; env of GNU coreutils 9, -S).
func interpreter(t *source.Tree, name string) string {
	file, err := t.Code(name)
	if err != nil {
		return ""
	}
	line, _, _ := strings.Cut(string(file.Data), "\n")
	line, ok := strings.CutPrefix(line, "#!")
	words := strings.Fields(line)
	if !ok || len(words) == 0 {
		return ""
	}
	if path.Base(words[0]) == "env" {
		for _, w := range words[1:] {
			if !strings.HasPrefix(w, "-") && !strings.Contains(w, "=") {
				return path.Base(w)
			}
		}
		return ""
	}
	return path.Base(words[0])
}

// fileServers serve the files of a folder, whatever is in it: their runtime is
// that of the folder.
var fileServers = map[string]bool{"serve": true, "http-server": true, "sirv": true}

// module reports whether a word names a module of Python that lies in a folder,
// with its callable or without; or the server of files that Python comes with.
func module(t *source.Tree, f Folder, word string, dirs []string) bool {
	name, _, _ := strings.Cut(word, ":")
	if name == "http.server" {
		return true
	}
	for _, dir := range dirs {
		p := Join(Join(f.Dir, dir), strings.ReplaceAll(name, ".", "/"))
		if t.Has(p+".py") || t.Has(p+"/__main__.py") || t.Has(p+"/__init__.py") {
			return true
		}
	}
	return false
}

// class reports whether a word names a class of Java by its whole name, and its source
// lies below a folder, in a folder that no build is responsible for.
func class(t *source.Tree, f Folder, word string) bool {
	if !strings.Contains(word, ".") || strings.ContainsAny(word, "/:$=-") {
		return false
	}
	end := "/" + strings.ReplaceAll(word, ".", "/") + ".java"
	for _, e := range t.Below(f.Dir) {
		if strings.HasSuffix("/"+e.Path, end) && e.OnDisk {
			for d := source.Dir(e.Path); d != f.Dir; d = source.Dir(d) {
				if t.Has(Join(d, "pom.xml")) || t.Has(Join(d, "build.gradle")) || t.Has(Join(d, "build.gradle.kts")) || d == "" {
					return false
				}
			}
			return true
		}
	}
	return false
}

// runtimeOf tells the runtime that a word of a command or an image's name
// belongs to.
func runtimeOf(word string) string {
	base := path.Base(word)
	base, _, _ = strings.Cut(base, ":")
	if m := managers[base]; m != "" {
		return m
	}
	if p := command.Lookup(base); p != nil {
		return p.Runtime
	}
	if base == "manage.py" {
		return "python"
	}
	return ""
}
