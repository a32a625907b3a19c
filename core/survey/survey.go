// Package survey finds the components of a tree and gathers their facts. One
// folder below it serves each runtime; this package holds what they share:
// reading the code that a start reaches, listeners, variables, secrets.
package survey

import (
	"path"
	"runtime"
	"slices"
	"sort"
	"strings"
	"sync"
	"sync/atomic"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
)

// Folder is a folder of the tree with the names of its files.
type Folder struct {
	Dir   string
	Names map[string]bool
}

// Has reports whether the folder holds a file of that name.
func (f Folder) Has(name string) bool { return f.Names[name] }

// Runtime is what one runtime knows. Its methods are pure: they read the tree
// and give facts.
type Runtime interface {
	Name() string
	// Claims says how strongly a folder looks like a component of this
	// runtime: 0 not at all, 1 a manifest, 2 something that starts.
	Claims(t *source.Tree, f Folder) int
	// Gather fills in pins, manifests, dependencies and scripts.
	Gather(t *source.Tree, c *fact.Component, f Folder)
	// Modules finds what imports lead to, for code that runs in dir.
	Modules(t *source.Tree, c *fact.Component, dir string) Modules
	// Entry gives the command that hosts run when nothing else says how to
	// start; ok is false where there is none.
	Entry(t *source.Tree, c *fact.Component) (command string, at string, ok bool)
	// Assumed gives the command that a developer would most likely run, so
	// that code without a start command can be looked at all the same.
	Assumed(t *source.Tree, c *fact.Component) (command string, ok bool)
	// Framework names the framework that a package is; empty for all others.
	Framework(pkg string) string
}

// Modules finds modules; it is the language's part of a value.Loader.
type Modules interface {
	// Resolve says which file of the tree an import leads to.
	Resolve(from *code.File, module, name string) (file string, ok bool)
	// Classify says what an import needs: a package, a file, nothing.
	Classify(from *code.File, imp *code.Node) []fact.Import
}

// Searching are modules that look for packages in more folders of the tree, which the
// environment of a start names.
type Searching interface{ Search(dirs []string) }

// Weak is a claim that counts only where no other runtime claims the folder or
// one above it.
const Weak = -1

// elsewhere are folders whose contents are not deployed on their own: tests,
// examples, output, documentation.
var elsewhere = map[string]bool{
	"test": true, "tests": true, "__tests__": true, "spec": true, "e2e": true, "fixtures": true, "__fixtures__": true, "testdata": true, "__mocks__": true, "mocks": true,
	"example": true, "examples": true, "sample": true, "samples": true, "docs": true, "doc": true, "dist": true, "out": true, "coverage": true, "htmlcov": true,
	"vendor": true, "third_party": true, "site-packages": true, "node_modules": true, "bower_components": true, "venv": true, "env": false, "static": true, "staticfiles": true, "public": true, "assets": true,
	"migrations": true, "templates": true, "template": true, "benchmarks": true, "benchmark": true, "storybook-static": true, "cypress": true, "playwright": true, "tmp": true, "temp": true, "__pycache__": true,
}

// Elsewhere reports whether a path lies in a folder of tests, examples,
// output or dependencies.
func Elsewhere(p string) bool {
	for part := range strings.SplitSeq(p, "/") {
		if elsewhere[strings.ToLower(part)] || len(part) > 1 && part[0] == '.' && part != ".." {
			return true
		}
	}
	return false
}

// Folders lists the folders in which a component may stand.
func Folders(t *source.Tree) []Folder {
	var list []Folder
	at := map[string]int{}
	lastDir, skip := "\x00", false
	cur := -1
	for _, e := range t.Entries {
		if !e.OnDisk {
			continue
		}
		d := source.Dir(e.Path)
		if d != lastDir {
			lastDir = d
			skip = d != "" && Elsewhere(d)
			if !skip {
				i, ok := at[d]
				if !ok {
					i = len(list)
					at[d] = i
					list = append(list, Folder{Dir: d, Names: map[string]bool{}})
				}
				cur = i
			}
		}
		if !skip {
			list[cur].Names[e.Path[len(d)+min(1, len(d)):]] = true
		}
	}
	sort.Slice(list, func(i, j int) bool { return list[i].Dir < list[j].Dir })
	return list
}

// claimed is the last net under what looks at hostile trees: a fault of ours
// in one runtime's look at one folder takes nothing else down.
func claimed(r Runtime, t *source.Tree, f Folder) (strength int) {
	defer func() {
		if recover() != nil {
			strength = 0
		}
	}()
	return r.Claims(t, f)
}

// Find finds the components of a tree.
func Find(t *source.Tree, runtimes []Runtime) []*fact.Component {
	type claim struct {
		r        Runtime
		f        Folder
		strength int
	}
	// The folders are looked at on all cores; the claims keep their order.
	folders := Folders(t)
	byFolder := make([][]claim, len(folders))
	var next atomic.Int64
	var wg sync.WaitGroup
	for range max(1, min(runtime.GOMAXPROCS(0), len(folders)/16)) {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for i := int(next.Add(1)) - 1; i < len(folders); i = int(next.Add(1)) - 1 {
				for _, r := range runtimes {
					if s := claimed(r, t, folders[i]); s != 0 {
						byFolder[i] = append(byFolder[i], claim{r, folders[i], s})
					}
				}
				if slices.ContainsFunc(byFolder[i], func(c claim) bool { return c.strength > 1 }) {
					continue
				}
				if named := StartedBy(t, folders[i]); named != "" {
					byFolder[i] = slices.DeleteFunc(byFolder[i], func(c claim) bool { return c.r.Name() == named })
					for _, r := range runtimes {
						if r.Name() == named {
							byFolder[i] = append(byFolder[i], claim{r, folders[i], 2})
						}
					}
				}
			}
		}()
	}
	wg.Wait()
	var claims []claim
	for _, list := range byFolder {
		claims = append(claims, list...)
	}
	strongest := map[string]int{}
	for _, c := range claims {
		strongest[c.f.Dir] = max(strongest[c.f.Dir], c.strength)
	}
	weak := map[string]bool{}
	for i, c := range claims {
		if c.strength != Weak {
			continue
		}
		alone := true
		for d := c.f.Dir; alone; d = source.Dir(d) {
			alone = strongest[d] == 0 && !(d != c.f.Dir && weak[d])
			if d == "" {
				break
			}
		}
		if alone && !weak[c.f.Dir] {
			weak[c.f.Dir], claims[i].strength = true, 2
		}
	}
	var list []*fact.Component
	for _, c := range claims {
		if c.strength < 2 || c.strength < strongest[c.f.Dir] {
			continue
		}
		comp := &fact.Component{ID: c.f.Dir, Dir: c.f.Dir, Runtime: c.r.Name()}
		if comp.ID == "" {
			comp.ID = "."
		}
		for _, o := range list {
			if o.ID == comp.ID {
				comp.ID += " (" + c.r.Name() + ")"
			}
		}
		list = append(list, comp)
	}
	return list
}

// Program is the code that one start reaches. It loads each file once.
type Program struct {
	t     *source.Tree
	m     Modules
	cache *Cache
	files map[string]*code.File

	skimmed   []*code.File      // in the order in which they were met
	mentioned map[[2]string]int // how many of these were looked at for a name and a file
	order     []*code.File
	data      map[string]*document.Node

	// told is the language of files whose names and first lines do not tell it,
	// and which a start gives to an interpreter.
	told map[string]code.Language

	inlined string // the file in which a command holds the program itself
}

// interpreters are the languages that runtimes take a file for. Sources: the
// manuals of node, bun, ruby, python and php, read 2026-11.
var interpreters = map[string]code.Language{"node": code.JSX, "bun": code.JSX, "ruby": code.Ruby, "python": code.Python, "php": code.PHP}

// Tell notes that a runtime is started with the file.
func (p *Program) Tell(name, runtime string) {
	lang, ok := interpreters[runtime]
	if !ok || path.Ext(name) != "" || p.inlined == name {
		return
	}
	if p.told == nil {
		p.told = map[string]code.Language{}
	}
	p.told[name] = lang
	if p.cache.files[name] == nil { // read for another start, which did not tell
		delete(p.cache.files, name)
		delete(p.files, name)
	}
}

// Inline takes a program that stands in a command, in the place of the file that it
// stands in: what is before it there is filled up, so that places are those of the
// file. It gives the name to load it by.
func (p *Program) Inline(runtime, text string, at place.Span) string {
	lang := interpreters[runtime]
	fill := strings.Repeat("\n", max(0, at.Line-1))
	switch first, _, _ := strings.Cut(strings.TrimSpace(text), " "); {
	case runtime == "php":
		fill += "<?php" + strings.Repeat(" ", max(1, at.Col-5))
	case runtime != "python":
		fill += strings.Repeat(" ", at.Col)
	case !compound[first] && at.Col > 3: // blanks would be an indent
		fill += "0" + strings.Repeat(" ", at.Col-2) + ";"
	}
	src := []byte(fill + text)
	f := code.ReadAs(lang, at.File, src, place.NewLines(src))
	p.files[at.File], p.inlined = f, at.File
	p.order = append(p.order, f)
	return at.File
}

// compound are the words that begin a statement of Python that must stand at the
// front of its line.
var compound = map[string]bool{"def": true, "class": true, "if": true, "for": true, "while": true, "with": true, "try": true, "try:": true, "async": true, "match": true}

// Cache keeps the source files that have been read, for all starts of a
// component.
type Cache struct{ files, skimmed map[string]*code.File }

// NewCache makes an empty cache.
func NewCache() *Cache {
	return &Cache{files: map[string]*code.File{}, skimmed: map[string]*code.File{}}
}

// NewProgram makes the loader of one start.
func NewProgram(t *source.Tree, m Modules, c *Cache) *Program {
	return &Program{t: t, m: m, cache: c, files: map[string]*code.File{}, data: map[string]*document.Node{}}
}

// Resolve implements value.Loader.
func (p *Program) Resolve(from *code.File, module, name string) (string, bool) {
	return p.m.Resolve(from, module, name)
}

// Skim gives a file as File does, or only its imports where nothing else in it
// is asked for.
func (p *Program) Skim(name string) *code.File {
	if f, ok := p.cache.files[name]; ok || p.files[name] != nil {
		if f != nil {
			return p.File(name)
		}
		return nil
	}
	if f, ok := p.cache.skimmed[name]; ok {
		if !slices.Contains(p.skimmed, f) {
			p.skimmed = append(p.skimmed, f)
		}
		return f
	}
	lang := code.LanguageOf(name)
	if lang != code.None && lang != code.Go && p.t.Has(name) {
		if src, err := p.t.Code(name); err == nil && !generated(src.Data) && !code.Matters(src.Data) {
			if f := code.Skim(lang, name, src.Data, src.Lines()); f != nil {
				p.cache.skimmed[name] = f
				p.skimmed = append(p.skimmed, f)
				return f
			}
		}
	}
	return p.File(name)
}

// Mentioning implements value.Loader: files that were only skimmed and use the
// name, or take something from the file, are read in full.
func (p *Program) Mentioning(name, file string) []*code.File {
	key := [2]string{name, file}
	since := p.mentioned[key] // those before were looked at
	if p.mentioned == nil {
		p.mentioned = map[[2]string]int{}
	}
	p.mentioned[key] = len(p.skimmed)
	for _, f := range p.skimmed[since:] {
		if p.files[f.Name] != nil {
			continue
		}
		wanted := uses(f, name)
		for _, imp := range f.Imports {
			if to, ok := p.m.Resolve(f, imp.Node.Name, ""); ok && to == file {
				wanted = true
			}
		}
		if wanted {
			p.File(f.Name)
		}
	}
	return p.order
}

// File implements value.Loader.
func (p *Program) File(name string) *code.File {
	if f, ok := p.files[name]; ok {
		return f
	}
	f, ok := p.cache.files[name]
	if !ok && (code.LanguageOf(name) != code.None || path.Ext(name) == "") && p.t.Has(name) {
		if src, err := p.t.Code(name); err == nil && !generated(src.Data) {
			lang := code.LanguageOf(name)
			if lang == code.None {
				lang = interpreted(src.Data)
			}
			if lang == code.None {
				lang = p.told[name]
			}
			if lang != code.None {
				f = code.ReadAs(lang, name, src.Data, src.Lines())
			}
		}
		p.cache.files[name] = f
	}
	p.files[name] = f
	if f != nil {
		p.order = append(p.order, f)
	}
	return f
}

// interpreted tells the language of a file without an extension from its
// first line.
func interpreted(src []byte) code.Language {
	first, _, _ := strings.Cut(string(src[:min(200, len(src))]), "\n")
	switch {
	case !strings.HasPrefix(first, "#!"):
		return code.None
	case strings.Contains(first, "python"):
		return code.Python
	case strings.Contains(first, "ruby"):
		return code.Ruby
	case strings.Contains(first, "php"):
		return code.PHP
	case strings.Contains(first, "elixir"):
		return code.Elixir
	case strings.Contains(first, "node") || strings.Contains(first, "bun") || strings.Contains(first, "deno"):
		return code.JSX
	}
	return code.None
}

// generated tells minified files, which say nothing that a person wrote.
func generated(src []byte) bool {
	if len(src) < 20_000 {
		return false
	}
	lines := 1
	for _, c := range src {
		if c == '\n' {
			lines++
		}
	}
	return len(src)/lines > 500
}

// Data implements value.Loader.
func (p *Program) Data(name string) *document.Node {
	if d, ok := p.data[name]; ok {
		return d
	}
	var d *document.Node
	if p.t.Has(name) {
		if src, err := p.t.Document(name); err == nil {
			switch path.Ext(name) {
			case ".json":
				d, _ = document.JSON(name, src.Data, src.Lines(), true)
			case ".yaml", ".yml":
				if docs, err := document.YAML(name, src.Data, src.Lines()); err == nil && len(docs) > 0 {
					d = docs[0]
				}
			case ".properties", ".ini", ".cfg", ".conf":
				d = document.INI(name, src.Data, src.Lines())
			case ".toml":
				d, _ = document.TOML(name, src.Data, src.Lines())
			}
			if dotenvName(path.Base(name)) && p.t.State(name) == source.Shipped { // what stays behind is not there
				d = document.Dotenv(name, src.Data, src.Lines())
			}
		}
	}
	p.data[name] = d
	return d
}

// Text implements value.Loader.
func (p *Program) Text(name string) (string, bool) {
	if !p.t.Has(name) || dotenvName(path.Base(name)) && p.t.State(name) != source.Shipped { // what stays behind is not there
		return "", false
	}
	src, err := p.t.Document(name)
	if err != nil || len(src.Data) > 1<<16 {
		return "", false
	}
	return string(src.Data), true
}

// Beside implements value.Loader.
func (p *Program) Beside(dir string) []string {
	var list []string
	for _, e := range p.t.In(dir) {
		list = append(list, e.Path)
	}
	return list
}

// Folder implements value.Loader.
func (p *Program) Folder(dir string) bool { return dir == "" || dir == "." || p.t.HasDir(dir) }

// maxListed is how many files below a folder are looked at to list it.
const maxListed = 20_000

// Listed names the files and folders that ship in a folder of the tree, in the
// order of names; none where there are too many.
func (p *Program) Listed(dir string) (names []string) {
	below := p.t.Below(dir)
	if len(below) > maxListed {
		return nil
	}
	skip := 0
	if dir != "" && dir != "." {
		skip = len(dir) + 1
	}
	seen := map[string]bool{}
	for _, e := range below {
		if name, _, _ := strings.Cut(e.Path[skip:], "/"); !seen[name] && p.t.State(e.Path) == source.Shipped {
			seen[name] = true
			names = append(names, name)
		}
	}
	slices.Sort(names)
	return names
}

// Loaded implements value.Loader.
func (p *Program) Loaded() []*code.File { return p.order }

// IsTest tells files that only tests run.
func IsTest(name string) bool {
	base := path.Base(name)
	return strings.Contains(base, ".test.") || strings.Contains(base, ".spec.") || strings.HasPrefix(base, "test_") || strings.HasSuffix(base, "_test.py") || base == "conftest.py" || base == "tests.py"
}
