package source

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"sort"
	"strings"
	"sync"

	"github.com/go-git/go-git/v5/plumbing/filemode"
	"github.com/go-git/go-git/v5/plumbing/format/gitignore"
	"github.com/go-git/go-git/v5/plumbing/format/index"

	"ubique/core/place"
)

// repository is the git repository that a tree lies in.
type repository struct {
	gitDir    string // where index is
	commonDir string // where info/exclude is (another one in a linked worktree)
	prefix    string // the tree's folder below the top of the work tree, with a slash
	top       string
}

// findRepository looks for .git in dir and the folders above it. A .git file
// that points elsewhere (worktrees, submodules) is followed. No repository is
// no error.
func findRepository(dir string) (*repository, error) {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	for at := abs; ; at = filepath.Dir(at) {
		dot := filepath.Join(at, ".git")
		info, err := os.Stat(dot)
		if err == nil {
			r := &repository{gitDir: dot, top: at}
			if !info.IsDir() {
				text, err := readSmall(dot)
				target, ok := strings.CutPrefix(strings.TrimSpace(text), "gitdir:")
				if err != nil || !ok {
					return nil, errors.New("this .git file does not say 'gitdir: FOLDER'; taken as a plain folder")
				}
				r.gitDir = absolute(at, strings.TrimSpace(target))
			}
			r.commonDir = r.gitDir
			if text, err := readSmall(filepath.Join(r.gitDir, "commondir")); err == nil {
				r.commonDir = absolute(r.gitDir, strings.TrimSpace(text))
			}
			if rel, err := filepath.Rel(at, abs); err == nil && rel != "." {
				r.prefix = filepath.ToSlash(rel) + "/"
			}
			if _, err := os.Stat(filepath.Join(r.gitDir, "HEAD")); err != nil {
				return nil, nil
			}
			return r, nil
		}
		if filepath.Dir(at) == at {
			return nil, nil
		}
	}
}

func absolute(base, p string) string {
	if filepath.IsAbs(p) {
		return p
	}
	return filepath.Join(base, p)
}

func readSmall(name string) (string, error) {
	info, err := os.Stat(name)
	if err != nil {
		return "", err
	}
	if !info.Mode().IsRegular() || info.Size() > CodeLimit {
		return "", ErrNotRegular
	}
	data, err := os.ReadFile(name)
	return string(data), err
}

// tracked reads the index (gitformat-index(5), versions 2 to 4) and gives the
// entries below the tree, sorted by path, and the folders of submodules.
func (r *repository) tracked() ([]Entry, []string, error) {
	f, err := os.Open(filepath.Join(r.gitDir, "index"))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil, nil
	}
	if err != nil {
		return nil, nil, fmt.Errorf("reading the git index: %w", err)
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil || !info.Mode().IsRegular() || info.Size() > 1<<30 {
		return nil, nil, errors.New("the git index is not a file that can be read")
	}
	data, err := io.ReadAll(f)
	if err != nil {
		return nil, nil, fmt.Errorf("reading the git index: %w", err)
	}
	var idx index.Index
	if err := index.NewDecoder(bytes.NewReader(data)).Decode(&idx); err != nil {
		return nil, nil, fmt.Errorf("reading the git index: %w", err)
	}
	list := make([]Entry, 0, len(idx.Entries))
	var modules []string
	for _, e := range idx.Entries {
		p, ok := strings.CutPrefix(e.Name, r.prefix)
		if ok && e.Mode == filemode.Submodule {
			modules = append(modules, p)
		}
		if !ok || e.Mode == filemode.Submodule || e.Mode == filemode.Dir || e.IntentToAdd {
			continue
		}
		if n := len(list); n > 0 && list[n-1].Path == p {
			continue // stages of a merge conflict
		}
		list = append(list, Entry{Path: p, Tracked: true, Exec: e.Mode == filemode.Executable, Link: e.Mode == filemode.Symlink, Size: int64(e.Size)})
	}
	sort.Slice(list, func(i, j int) bool { return list[i].Path < list[j].Path })
	return list, modules, nil
}

// ignoreRules are the patterns of .gitignore files and info/exclude, by the
// folder that they stand in (gitignore(5)).
type ignoreRules struct {
	mu     sync.RWMutex
	base   []gitignore.Pattern
	byDir  map[string][]gitignore.Pattern
	prefix []string
}

func newIgnoreRules(r *repository) *ignoreRules {
	g := &ignoreRules{byDir: map[string][]gitignore.Pattern{}}
	if r == nil {
		return g
	}
	if text, err := readSmall(filepath.Join(r.commonDir, "info", "exclude")); err == nil {
		g.base = patterns(text, nil)
	}
	if r.prefix != "" {
		g.prefix = strings.Split(strings.TrimSuffix(r.prefix, "/"), "/")
	}
	// Ignore files of the folders above the tree count too.
	for i := range g.prefix {
		dir := filepath.Join(append([]string{r.top}, g.prefix[:i]...)...)
		if text, err := readSmall(filepath.Join(dir, ".gitignore")); err == nil {
			g.base = append(g.base, patterns(text, g.prefix[:i])...)
		}
	}
	return g
}

func patterns(text string, domain []string) []gitignore.Pattern {
	var list []gitignore.Pattern
	for line := range strings.SplitSeq(text, "\n") {
		line = strings.TrimSuffix(line, "\r")
		if line == "" || line[0] == '#' || strings.TrimSpace(line) == "" {
			continue
		}
		if !strings.HasSuffix(line, `\ `) {
			line = strings.TrimRight(line, " ")
		}
		list = append(list, gitignore.ParsePattern(line, append([]string(nil), domain...)))
	}
	return list
}

// enter reads the ignore file of a folder when its listing has one.
func (g *ignoreRules) enter(t *Tree, dir string, list []fs.DirEntry) {
	for _, d := range list {
		if d.Name() != ".gitignore" || !d.Type().IsRegular() {
			continue
		}
		p := ".gitignore"
		domain := append([]string(nil), g.prefix...)
		if dir != "" {
			p = dir + "/" + p
			domain = append(domain, strings.Split(dir, "/")...)
		}
		if f, err := t.Code(p); err == nil {
			ps := patterns(strings.TrimPrefix(string(f.Data), "\ufeff"), domain)
			g.mu.Lock()
			g.byDir[dir] = ps
			g.mu.Unlock()
		}
	}
}

// ignored applies the rules of the folders above a path, the deepest last; a
// path in an ignored folder is not asked for, since the walk stops there.
func (g *ignoreRules) ignored(p string, dir bool) bool {
	g.mu.RLock()
	defer g.mu.RUnlock()
	if len(g.byDir) == 0 && len(g.base) == 0 {
		return false
	}
	parts := append(append([]string(nil), g.prefix...), strings.Split(p, "/")...)
	for at := Dir(p); ; at = Dir(at) {
		if v, ok := match(g.byDir[at], parts, dir); ok {
			return v
		}
		if at == "" {
			break
		}
	}
	v, _ := match(g.base, parts, dir)
	return v
}

func match(ps []gitignore.Pattern, parts []string, dir bool) (ignored, decided bool) {
	for i := len(ps) - 1; i >= 0; i-- {
		switch ps[i].Match(parts, dir) {
		case gitignore.Exclude:
			return true, true
		case gitignore.Include:
			return false, true
		}
	}
	return false, false
}

// IgnoreRule finds the ignore file and the line that keep a path (or a folder
// above it) out of the shipment.
func (t *Tree) IgnoreRule(p string) (at place.Span, ok bool) {
	for dir := Dir(p); ; dir = Dir(dir) {
		name := ".gitignore"
		domain := append([]string(nil), t.ignore.prefix...)
		if dir != "" {
			name = dir + "/" + name
			domain = append(domain, strings.Split(dir, "/")...)
		}
		if f, err := t.Code(name); err == nil {
			lines := f.Lines()
			for n := lines.Count(); n >= 1; n-- {
				text := lines.Text(n)
				for _, pat := range patterns(text, domain) {
					for q, isDir := p, false; q != dir && q != ""; q, isDir = Dir(q), true {
						parts := append(append([]string(nil), t.ignore.prefix...), strings.Split(q, "/")...)
						if pat.Match(parts, isDir) == gitignore.Exclude {
							return place.Span{File: name, Line: n, Col: 1, EndLine: n, EndCol: len([]rune(text)) + 1}, true
						}
					}
				}
			}
		}
		if dir == "" {
			return place.Span{}, false
		}
	}
}
