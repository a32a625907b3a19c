// Package lock reads the lock files of package managers: which packages in
// which versions, for whom, and where it says so. It compares nothing; the
// readers go through a file once, without making a tree of it, so that a lock
// of sixty thousand lines takes milliseconds.
package lock

import (
	"path"
	"sort"
	"strings"
	"sync"

	"ubique/core/place"
	"ubique/core/source"
)

// Package is one package that a lock holds.
type Package struct {
	Name    string // as the manager compares it
	Version string
	Dir     string // the folder for which it is installed, for locks of workspaces
	Dev     bool   // installed for development only
	Local   bool   // a folder of the tree, without a version that counts
	Off     int    // the byte of the file where it stands
}

// Lock is what a lock file says.
type Lock struct {
	File, Manager string
	Format        string // the version of the format; may be empty
	Packages      []Package
	Asked         map[string]map[string]string // by folder: what the manifest asked for when the lock was made
	Platforms     []string                     // the platforms that it was made for, where it says so
	PlatformsOff  int
	Runtime       string // the version of the runtime that it holds, with its byte
	RuntimeOff    int
	Tool          string // the version of the manager that wrote it
	Hashed        bool   // entries without a hash are refused
	Problem       string // why it could not be read; empty where it could

	file   *source.File
	byName map[string][]int
}

// kinds are the lock files by name, the manager that writes each, and how it
// is read. Source: each manager's documentation and its own output, 2026-11.
var kinds = []struct {
	name, manager string
	read          func(*Lock, []byte)
}{
	{"npm-shrinkwrap.json", "npm", npm}, {"package-lock.json", "npm", npm}, {"pnpm-lock.yaml", "pnpm", pnpm}, {"yarn.lock", "yarn", yarn}, {"bun.lock", "bun", bun}, {"bun.lockb", "bun", nil}, {"deno.lock", "deno", deno},
	{"poetry.lock", "poetry", tables}, {"uv.lock", "uv", tables}, {"pdm.lock", "pdm", tables}, {"pylock.toml", "pip", pylock}, {"Pipfile.lock", "pipenv", pipenv},
	{"Gemfile.lock", "bundler", bundler}, {"gems.locked", "bundler", bundler}, {"composer.lock", "composer", composer}, {"Cargo.lock", "cargo", tables}, {"go.sum", "go", goSum},
	{"packages.lock.json", "nuget", nuget}, {"gradle.lockfile", "gradle", gradle}, {"mix.lock", "mix", mix},
}

// Manager tells the package manager that writes a lock of this name.
func Manager(base string) string {
	for _, k := range kinds {
		if k.name == base {
			return k.manager
		}
	}
	return ""
}

// Reader reads each lock of a tree once.
type Reader struct {
	tree  *source.Tree
	mu    sync.Mutex
	locks map[string]*once
}

type once struct {
	do   sync.Once
	lock *Lock
}

// NewReader makes the reader of a tree's locks.
func NewReader(t *source.Tree) *Reader { return &Reader{tree: t, locks: map[string]*once{}} }

// Read reads a lock; nil where the file is not there.
func (r *Reader) Read(name string) *Lock {
	r.mu.Lock()
	o := r.locks[name]
	if o == nil {
		o = &once{}
		r.locks[name] = o
	}
	r.mu.Unlock()
	o.do.Do(func() {
		if !r.tree.Has(name) {
			return
		}
		l := &Lock{File: name, Manager: Manager(path.Base(name)), Asked: map[string]map[string]string{}}
		o.lock = l
		f, err := r.tree.Document(name)
		if err != nil {
			l.Problem = err.Error()
			return
		}
		l.file = f
		for _, k := range kinds {
			if k.name == path.Base(name) && k.read != nil {
				k.read(l, f.Data)
			} else if k.name == path.Base(name) {
				l.Problem = "a lock in a binary form is not read"
			}
		}
		l.byName = make(map[string][]int, len(l.Packages))
		for i, p := range l.Packages {
			l.byName[p.Name] = append(l.byName[p.Name], i)
		}
	})
	return o.lock
}

// Find lists the locks in a folder, in the order of the table.
func (r *Reader) Find(dir string, managers ...string) []string {
	var list []string
	for _, k := range kinds {
		for _, m := range managers {
			p := k.name
			if dir != "" {
				p = dir + "/" + k.name
			}
			if k.manager == m && r.tree.Has(p) {
				list = append(list, p)
			}
		}
	}
	return list
}

// Of lists the entries of a package that code in a folder gets: those of the
// folder itself, else those of the folders above, else all.
func (l *Lock) Of(dir, name string) []Package {
	if l == nil {
		return nil
	}
	for d := dir; ; d = source.Dir(d) {
		var here []Package
		for _, i := range l.byName[name] {
			if l.Packages[i].Dir == d {
				here = append(here, l.Packages[i])
			}
		}
		if len(here) > 0 {
			return here
		}
		if d == "" {
			break
		}
	}
	var all []Package
	for _, i := range l.byName[name] {
		all = append(all, l.Packages[i])
	}
	return all
}

// Names lists the packages that are not for development only, sorted.
func (l *Lock) Names() []string {
	var list []string
	for name, at := range l.byName {
		for _, i := range at {
			if !l.Packages[i].Dev {
				list = append(list, name)
				break
			}
		}
	}
	sort.Strings(list)
	return list
}

// At is the place of a byte of the lock: the rest of its line.
func (l *Lock) At(off int) place.Span {
	if l.file == nil || off < 0 || off > len(l.file.Data) {
		return place.Span{File: l.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
	}
	end := off
	for end < len(l.file.Data) && l.file.Data[end] != '\n' && l.file.Data[end] != '\r' {
		end++
	}
	return l.file.Span(off, end)
}

// Top is the place of the first line.
func (l *Lock) Top() place.Span {
	return place.Span{File: l.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
}

// ask notes what a manifest asked for.
func (l *Lock) ask(dir, name, spec string) {
	if l.Asked[dir] == nil {
		l.Asked[dir] = map[string]string{}
	}
	l.Asked[dir][name] = spec
}

// lines calls visit for each line without its end, with its first byte.
func lines(data []byte, visit func(off int, line string)) {
	text := string(data)
	for off := 0; off < len(text); {
		end := strings.IndexByte(text[off:], '\n')
		next := off + end + 1
		if end < 0 {
			end, next = len(text)-off, len(text)
		}
		visit(off, strings.TrimSuffix(text[off:off+end], "\r"))
		off = next
	}
}

// indent counts the spaces at the front of a line.
func indent(s string) int { return len(s) - len(strings.TrimLeft(s, " ")) }

// bare takes the quotes off a text.
func bare(s string) string {
	s = strings.TrimSpace(s)
	if len(s) > 1 && (s[0] == '"' || s[0] == '\'') && s[len(s)-1] == s[0] {
		return s[1 : len(s)-1]
	}
	return s
}

// Normal gives the name of a Python distribution in the form for comparing
// (PEP 503).
func Normal(s string) string {
	var b strings.Builder
	dash := false
	for _, r := range strings.ToLower(strings.TrimSpace(s)) {
		if r == '-' || r == '_' || r == '.' {
			dash = true
			continue
		}
		if dash {
			b.WriteByte('-')
			dash = false
		}
		b.WriteRune(r)
	}
	return b.String()
}
