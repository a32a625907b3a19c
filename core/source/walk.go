package source

import (
	"io/fs"
	"os"
	"path/filepath"
	"runtime"
	"sort"
	"strings"
	"sync"
)

// dependencyFolders are the folders that package managers fill and that are
// made anew on the host. A virtual environment of any name is known by the
// pyvenv.cfg in it (PEP 405).
var dependencyFolders = map[string]string{
	"node_modules":     "Node.js packages",
	"bower_components": "browser packages",
	"__pypackages__":   "Python packages",
	".venv":            "a Python virtual environment",
	"venv":             "a Python virtual environment",
	"site-packages":    "Python packages",
	"__pycache__":      "Python byte code",
	".tox":             "Python test environments",
	".nox":             "Python test environments",
}

// DependencyFolder says what a folder name holds when package managers fill
// it; ok is false for every other name.
func DependencyFolder(name string) (what string, ok bool) {
	what, ok = dependencyFolders[name]
	return what, ok
}

// DependencyPath gives the topmost dependency folder of a path.
func DependencyPath(p string) (folder, what string, ok bool) {
	for i := 0; i < len(p); {
		j := strings.IndexByte(p[i:], '/')
		if j < 0 {
			return "", "", false
		}
		if what, ok := dependencyFolders[p[i:i+j]]; ok {
			return p[:i+j], what, true
		}
		i += j + 1
	}
	return "", "", false
}

type walker struct {
	t       *Tree
	tracked []Entry // sorted
	work    chan string
	pending sync.WaitGroup
	mu      sync.Mutex
	found   []Entry
	seen    []string // tracked paths that are on disk
	skipped []string
}

// walk reads the folders of the tree on all cores and merges what is on disk
// with what is tracked.
func (t *Tree) walk(tracked []Entry) {
	w := &walker{t: t, tracked: tracked, work: make(chan string, 1<<10)}
	w.pending.Add(1)
	w.work <- ""
	var done sync.WaitGroup
	for range max(2, runtime.GOMAXPROCS(0)) {
		done.Add(1)
		go func() {
			defer done.Done()
			for dir := range w.work {
				w.folder(dir)
				w.pending.Done()
			}
		}()
	}
	w.pending.Wait()
	close(w.work)
	done.Wait()

	onDisk := make([]bool, len(tracked))
	for _, p := range w.seen {
		if i, ok := w.index(p); ok {
			onDisk[i] = true
		}
	}
	for i := range tracked {
		// Tracked dependency folders are not walked: the index says it all.
		if _, _, dep := DependencyPath(tracked[i].Path); dep {
			onDisk[i] = true
		}
		tracked[i].OnDisk = onDisk[i]
	}
	t.Entries = append(w.found, tracked...)
	sort.Slice(t.Entries, func(i, j int) bool { return t.Entries[i].Path < t.Entries[j].Path })
	sort.Strings(w.skipped)
	t.Skipped = w.skipped
	t.LeftOut = len(w.skipped)
	last := ""
	for i := range t.Entries {
		e := &t.Entries[i]
		if t.Route == Git && e.Tracked || t.Route == Upload && !e.Ignored {
			t.Shipped++
		} else {
			t.LeftOut++
		}
		if d := Dir(e.Path); d != last {
			for last = d; d != "" && !t.dirs[d]; d = Dir(d) {
				t.dirs[d] = true
			}
		}
	}
}

func (w *walker) index(p string) (int, bool) {
	i := sort.Search(len(w.tracked), func(i int) bool { return w.tracked[i].Path >= p })
	return i, i < len(w.tracked) && w.tracked[i].Path == p
}

// tracksBelow reports whether git tracks anything below the folder.
func (w *walker) tracksBelow(dir string) bool {
	p := dir + "/"
	i := sort.Search(len(w.tracked), func(i int) bool { return w.tracked[i].Path >= p })
	return i < len(w.tracked) && strings.HasPrefix(w.tracked[i].Path, p)
}

func (w *walker) folder(dir string) {
	name := dir
	if name == "" {
		name = "."
	}
	if strings.Count(dir, "/") >= maxDepth {
		w.t.problem(dir, "nested too deep: not entered")
		return
	}
	list, err := readDir(w.t, name)
	if err != nil {
		w.t.problem(name, "not readable: "+reason(err))
		return
	}
	w.t.ignore.enter(w.t, dir, list)
	venv := false
	for _, d := range list {
		if d.Name() == "pyvenv.cfg" {
			venv = dir != "" && !w.tracksBelow(dir)
		}
	}
	if venv {
		w.mu.Lock()
		w.skipped = append(w.skipped, dir)
		w.mu.Unlock()
		return
	}
	var found []Entry
	var seen, skipped []string
	for _, d := range list {
		p := d.Name()
		if dir != "" {
			p = dir + "/" + p
		}
		if d.IsDir() {
			if d.Name() == ".git" {
				continue
			}
			if _, ok := dependencyFolders[d.Name()]; ok {
				if !w.tracksBelow(p) {
					skipped = append(skipped, p)
				}
				continue
			}
			if w.t.ignore.ignored(p, true) && !w.tracksBelow(p) {
				// Ignored folders are listed one level deep, so that a needed
				// file in them is known to be left out and not missing.
				found = append(found, w.ignoredFolder(p, 0)...)
				continue
			}
			w.pending.Add(1)
			select {
			case w.work <- p:
			default:
				w.folder(p)
				w.pending.Done()
			}
			continue
		}
		if _, ok := w.index(p); ok {
			seen = append(seen, p)
			if d.Type()&fs.ModeSymlink != 0 {
				w.checkLink(p)
			}
			continue
		}
		if d.Name() == ".git" && dir == "" {
			continue
		}
		if m := d.Type(); m&(fs.ModeNamedPipe|fs.ModeSocket|fs.ModeDevice|fs.ModeCharDevice|fs.ModeIrregular) != 0 {
			w.t.problem(p, "not a regular file: stepped over")
			continue
		}
		e := Entry{Path: p, OnDisk: true, Link: d.Type()&fs.ModeSymlink != 0, Ignored: w.t.ignore.ignored(p, false)}
		if e.Link {
			w.checkLink(p)
		}
		found = append(found, e)
	}
	w.mu.Lock()
	w.found = append(w.found, found...)
	w.seen = append(w.seen, seen...)
	w.skipped = append(w.skipped, skipped...)
	if len(w.found) > maxEntries {
		w.t.problem(".", "too many files: the rest was not walked")
	}
	w.mu.Unlock()
}

// checkLink notes a link that leads nowhere, out of the tree or in a circle.
func (w *walker) checkLink(p string) {
	if _, err := w.t.root.Stat(p); err != nil {
		switch {
		case strings.Contains(err.Error(), "escapes"):
			w.t.problem(p, "a link that leads out of the tree: not followed")
			w.t.mu.Lock()
			w.t.links[p] = "out"
			w.t.mu.Unlock()
		case strings.Contains(err.Error(), "too many"):
			w.t.problem(p, "a link that leads to itself: not followed")
		default:
			w.t.problem(p, "a link that leads nowhere")
		}
	}
}

// ignoredFolder lists the files of an ignored folder, a few levels and a few
// hundred files deep: enough to know a needed file that is left out.
func (w *walker) ignoredFolder(dir string, depth int) []Entry {
	list, err := readDir(w.t, dir)
	if err != nil || depth > 4 {
		return nil
	}
	var found []Entry
	for _, d := range list {
		if len(found) > 500 {
			break
		}
		p := dir + "/" + d.Name()
		if _, dep := dependencyFolders[d.Name()]; dep || d.Name() == "pyvenv.cfg" && depth == 0 {
			return nil
		}
		if d.IsDir() {
			found = append(found, w.ignoredFolder(p, depth+1)...)
		} else if d.Type().IsRegular() {
			found = append(found, Entry{Path: p, OnDisk: true, Ignored: true})
		}
	}
	return found
}

func readDir(t *Tree, name string) ([]fs.DirEntry, error) {
	// The walk only ever descends into real folders (never links), so plain
	// paths are safe here and much cheaper than walking through the root.
	f, err := os.Open(filepath.Join(t.Root, filepath.FromSlash(name)))
	if err != nil {
		return nil, err
	}
	defer f.Close()
	return f.ReadDir(-1)
}
