// Package source is the tree under check and its shipment. It is the only
// package of the core that touches files: it walks the tree once, reads the
// git index (no git program is run), applies ignore rules, and hands out the
// contents of files within limits.
//
// A tree is hostile: links are never followed out of it, pipes and devices
// are never opened, and files over a limit are stepped over. Whatever was
// stepped over is listed in Tree.Problems.
package source

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"sort"
	"strings"
	"sync"
	"syscall"

	"ubique/core/place"
)

// Limits on what is read, in bytes (design §9).
const (
	CodeLimit     = 1 << 20  // a larger file is not read as code
	DocumentLimit = 32 << 20 // a larger file is not read as a document
	maxDepth      = 64       // folders below each other
	maxEntries    = 2_000_000
)

// Route is the way by which a host receives the tree.
type Route string

// The routes of a tree; the image route is decided per container file.
const (
	Git    Route = "git"    // the files that git tracks
	Upload Route = "upload" // the folder less its ignore rules and dependency folders
)

// State says whether a path reaches the host.
type State int

// The states of a path in the shipment.
const (
	Absent    State = iota // not in the tree at all
	Shipped                // reaches the host
	Untracked              // on disk, not tracked by git, not ignored
	Ignored                // on disk, kept out by an ignore rule
)

// Entry is one file or link of the tree. Paths use slashes and are relative
// to the root of the tree.
type Entry struct {
	Path    string
	Tracked bool
	Ignored bool
	Exec    bool // the execute bit, from the index where tracked
	Link    bool
	OnDisk  bool
	Size    int64 // in bytes, for tracked files
}

// Problem is something that was stepped over, and why.
type Problem struct {
	Path, Reason string
}

// Tree is the source under check. It is safe for concurrent use.
type Tree struct {
	Root    string // as given by the user
	Route   Route
	Entries []Entry  // sorted by path; what is below dependency folders only where tracked
	Skipped []string // dependency folders that do not ship, sorted
	Shipped int      // number of files that ship
	LeftOut int      // files and dependency folders on disk that do not
	Sub     bool     // a folder of a repository, not its top
	Modules []string // folders that are repositories of their own (git submodules)

	root     *os.Root
	mu       sync.Mutex
	files    map[string]*File
	problems map[string]string
	ignore   *ignoreRules
	dirs     map[string]bool
	links    map[string]string // links that are not followed, and why

	folds      sync.Once
	folded     map[string]int
	attributes attributeRules
	converts   bool // git turns CR LF into LF here
}

// File is one file that has been read.
type File struct {
	Path string
	Data []byte

	once  sync.Once
	lines *place.Lines
}

// Lines is the line index of the file, made at the first call.
func (f *File) Lines() *place.Lines {
	f.once.Do(func() { f.lines = place.NewLines(f.Data) })
	return f.lines
}

// Span is the span between two byte offsets of the file.
func (f *File) Span(off, end int) place.Span { return f.Lines().Span(f.Path, off, end) }

// Errors that Read returns, wrapped with the path.
var (
	ErrTooLarge   = errors.New("larger than what is read")
	ErrNotRegular = errors.New("not a regular file")
	ErrOutside    = errors.New("a link that leads out of the tree")
)

// Open walks the tree below dir. The error says what could not be read and
// is only returned when nothing could be.
func Open(dir string) (*Tree, error) {
	info, err := os.Stat(dir)
	if err != nil {
		return nil, fmt.Errorf("opening the tree: %w", err)
	}
	if !info.IsDir() {
		return nil, fmt.Errorf("opening the tree: %s is a file; name the folder that holds the application", dir)
	}
	root, err := os.OpenRoot(dir)
	if err != nil {
		return nil, fmt.Errorf("opening the tree: %w", err)
	}
	t := &Tree{Root: dir, Route: Upload, root: root, files: map[string]*File{}, problems: map[string]string{}, dirs: map[string]bool{}, links: map[string]string{}}
	repo, err := findRepository(dir)
	if err != nil {
		t.problem(".git", err.Error())
	}
	var tracked []Entry
	if repo != nil {
		t.Sub = repo.prefix != ""
		tracked, t.Modules, err = repo.tracked()
		t.converts = repo.convertsLineEnds()
		if err != nil {
			t.problem(".git/index", err.Error())
		}
		if len(tracked) > 0 {
			t.Route = Git
		}
	}
	t.ignore = newIgnoreRules(repo)
	t.walk(tracked)
	return t, nil
}

// Close releases the folder handle.
func (t *Tree) Close() error { return t.root.Close() }

func (t *Tree) problem(path, reason string) {
	t.mu.Lock()
	if _, ok := t.problems[path]; !ok {
		t.problems[path] = reason
	}
	t.mu.Unlock()
}

// Problems lists what was stepped over, in the order of the paths.
func (t *Tree) Problems() []Problem {
	t.mu.Lock()
	defer t.mu.Unlock()
	list := make([]Problem, 0, len(t.problems))
	for p, r := range t.problems {
		list = append(list, Problem{p, r})
	}
	sort.Slice(list, func(i, j int) bool { return list[i].Path < list[j].Path })
	return list
}

// OutOfTree reports whether a path is a link that leads out of the tree.
func (t *Tree) OutOfTree(p string) bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.links[p] != ""
}

// Find gives the entry of a path.
func (t *Tree) Find(p string) (Entry, bool) {
	i := sort.Search(len(t.Entries), func(i int) bool { return t.Entries[i].Path >= p })
	if i < len(t.Entries) && t.Entries[i].Path == p {
		return t.Entries[i], true
	}
	return Entry{}, false
}

// Has reports whether there is a file of that path on disk, shipped or not.
func (t *Tree) Has(p string) bool {
	e, ok := t.Find(p)
	return ok && e.OnDisk
}

// HasDir reports whether any file of the tree lies below the folder.
func (t *Tree) HasDir(p string) bool {
	if p == "" || p == "." {
		return true
	}
	return t.dirs[p]
}

// State says whether a path reaches the host by the tree's route.
func (t *Tree) State(p string) State {
	e, ok := t.Find(p)
	switch {
	case !ok || !e.OnDisk:
		return Absent
	case t.Route == Git && e.Tracked || t.InModule(p):
		return Shipped
	case e.Ignored:
		return Ignored
	case t.Route == Git:
		return Untracked
	}
	return Shipped
}

// InModule reports whether a path lies in a git submodule: the host has it
// where it fetches submodules.
func (t *Tree) InModule(p string) bool {
	for _, m := range t.Modules {
		if strings.HasPrefix(p, m+"/") {
			return true
		}
	}
	return false
}

// Below lists the entries whose path begins with the folder.
func (t *Tree) Below(dir string) []Entry {
	if dir == "" || dir == "." {
		return t.Entries
	}
	dir += "/"
	i := sort.Search(len(t.Entries), func(i int) bool { return t.Entries[i].Path >= dir })
	j := i
	for j < len(t.Entries) && strings.HasPrefix(t.Entries[j].Path, dir) {
		j++
	}
	return t.Entries[i:j]
}

// In lists the entries that lie directly in the folder.
func (t *Tree) In(dir string) []Entry {
	var list []Entry
	below := t.Below(dir)
	skip := 0
	if dir = clean(dir); dir != "" {
		skip = len(dir) + 1
	}
	for i := 0; i < len(below); {
		rest := below[i].Path[skip:]
		slash := strings.IndexByte(rest, '/')
		if slash < 0 {
			list = append(list, below[i])
			i++
			continue
		}
		next := below[i].Path[:skip+slash] + "0" // what stands behind all of the folder: 0 follows /
		i += sort.Search(len(below)-i, func(k int) bool { return below[i+k].Path >= next })
	}
	return list
}

func clean(dir string) string {
	if dir == "." {
		return ""
	}
	return dir
}

// Dir is the folder of a path, empty for the root of the tree.
func Dir(p string) string {
	if i := strings.LastIndexByte(p, '/'); i >= 0 {
		return p[:i]
	}
	return ""
}

// Join joins a folder of the tree and a relative path. The second result is
// false when the path leaves the tree or is absolute.
func Join(dir, rel string) (string, bool) {
	if strings.HasPrefix(rel, "/") {
		return "", false
	}
	p := path.Join(dir, rel)
	if p == ".." || strings.HasPrefix(p, "../") {
		return "", false
	}
	return clean(p), true
}

// Read gives a file's contents, read once. Files over the limit (bytes),
// pipes, devices and links that lead out of the tree give an error and are
// listed as a problem.
func (t *Tree) Read(p string, limit int64) (*File, error) {
	t.mu.Lock()
	f, ok := t.files[p]
	t.mu.Unlock()
	if ok {
		if f == nil {
			return nil, fmt.Errorf("reading %s: stepped over", p)
		}
		if int64(len(f.Data)) > limit {
			return nil, fmt.Errorf("reading %s: %w", p, ErrTooLarge)
		}
		return f, nil
	}
	data, err := t.read(p, limit)
	if err != nil {
		if !errors.Is(err, fs.ErrNotExist) && !errors.Is(err, ErrTooLarge) {
			t.problem(p, reason(err))
		}
		if errors.Is(err, ErrTooLarge) {
			t.problem(p, fmt.Sprintf("over %d MiB: not read", limit>>20))
		}
		return nil, fmt.Errorf("reading %s: %w", p, err)
	}
	f = &File{Path: p, Data: data}
	t.mu.Lock()
	if g, ok := t.files[p]; ok && g != nil {
		f = g
	} else {
		t.files[p] = f
	}
	t.mu.Unlock()
	return f, nil
}

func reason(err error) string {
	var pe *fs.PathError
	if errors.As(err, &pe) {
		err = pe.Err
	}
	return err.Error()
}

// read takes the short way for a plain file that the walk has met: its folders
// are real ones, so only the file itself could be a link, and that is refused
// at opening. All else goes through the root, which no path can leave.
func (t *Tree) read(p string, limit int64) ([]byte, error) {
	if e, ok := t.Find(p); ok && e.OnDisk && !e.Link {
		if _, _, dep := DependencyPath(p); !dep {
			if data, err := plain(t.Root+"/"+p, limit); !errors.Is(err, syscall.ELOOP) {
				return data, err
			}
		}
	}
	return t.careful(p, limit)
}

// plain reads a file that is no link with as few calls as it takes.
func plain(name string, limit int64) ([]byte, error) {
	fd, err := syscall.Open(name, syscall.O_RDONLY|syscall.O_NOFOLLOW|syscall.O_NONBLOCK|syscall.O_CLOEXEC, 0)
	if err != nil {
		return nil, &fs.PathError{Op: "open", Path: name, Err: err}
	}
	defer syscall.Close(fd)
	var st syscall.Stat_t
	if err := syscall.Fstat(fd, &st); err != nil {
		return nil, &fs.PathError{Op: "stat", Path: name, Err: err}
	}
	if st.Mode&syscall.S_IFMT != syscall.S_IFREG {
		return nil, ErrNotRegular
	}
	if st.Size > limit {
		return nil, ErrTooLarge
	}
	data := make([]byte, st.Size)
	n := 0
	for n < len(data) {
		m, err := syscall.Read(fd, data[n:])
		if errors.Is(err, syscall.EINTR) {
			continue
		}
		if err != nil {
			return nil, &fs.PathError{Op: "read", Path: name, Err: err}
		}
		if m == 0 {
			break
		}
		n += m
	}
	return data[:n], nil
}

func (t *Tree) careful(p string, limit int64) ([]byte, error) {
	if strings.HasPrefix(p, "/") { // of an image or of the machine, not of the tree
		return nil, fs.ErrNotExist
	}
	info, err := t.root.Lstat(p)
	if err != nil {
		return nil, err
	}
	if info.Mode()&fs.ModeSymlink != 0 {
		if info, err = t.root.Stat(p); err != nil {
			if errors.Is(err, fs.ErrNotExist) {
				return nil, errors.New("a link that leads nowhere")
			}
			if strings.Contains(err.Error(), "escapes") {
				return nil, ErrOutside
			}
			return nil, err
		}
	}
	if !info.Mode().IsRegular() {
		return nil, ErrNotRegular
	}
	if info.Size() > limit {
		return nil, ErrTooLarge
	}
	f, err := t.root.OpenFile(p, os.O_RDONLY|syscall.O_NONBLOCK, 0)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	data := make([]byte, info.Size(), info.Size()+1)
	n, err := io.ReadFull(f, data)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return nil, err
	}
	return data[:n], nil
}

// Document reads a file with the limit for documents.
func (t *Tree) Document(p string) (*File, error) { return t.Read(p, DocumentLimit) }

// Code reads a file with the limit for code.
func (t *Tree) Code(p string) (*File, error) { return t.Read(p, CodeLimit) }

// Abs is the path of the tree's root, absolute where that can be known.
func (t *Tree) Abs() string {
	if a, err := filepath.Abs(t.Root); err == nil {
		return a
	}
	return t.Root
}

// Forget lets go of the contents of files below a folder that were read, to
// keep memory low; they are read again when asked for.
func (t *Tree) Forget(dir string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	for p, f := range t.files {
		if f != nil && (dir == "" || strings.HasPrefix(p, dir+"/")) {
			delete(t.files, p)
		}
	}
}
