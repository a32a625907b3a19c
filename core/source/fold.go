package source

import (
	"path"
	"path/filepath"
	"strings"
)

// Fold finds the entry whose path differs from p only in letter case. It is
// asked only for paths that are not there.
func (t *Tree) Fold(p string) (Entry, bool) {
	t.folds.Do(func() {
		t.folded = make(map[string]int, len(t.Entries))
		for i, e := range t.Entries {
			low := strings.ToLower(e.Path)
			// Of two, the one that git has and the disk has not is the answer.
			if old, two := t.folded[low]; two && t.Entries[old].Tracked && !t.Entries[old].OnDisk {
				continue
			}
			if _, _, dep := DependencyPath(e.Path); !dep {
				t.folded[low] = i
			}
		}
	})
	i, ok := t.folded[strings.ToLower(p)]
	if !ok || t.Entries[i].Path == p {
		return Entry{}, false
	}
	return t.Entries[i], true
}

// written are the extensions of files that people write: no such file is large.
var written = map[string]bool{
	".js": true, ".mjs": true, ".cjs": true, ".ts": true, ".tsx": true, ".jsx": true, ".py": true, ".rb": true, ".go": true, ".java": true, ".kt": true, ".kts": true, ".php": true, ".cs": true, ".rs": true, ".ex": true, ".exs": true,
	".html": true, ".css": true, ".scss": true, ".less": true, ".md": true, ".txt": true, ".yml": true, ".yaml": true, ".toml": true, ".xml": true, ".vue": true, ".svelte": true, ".sh": true, ".erb": true, ".eex": true, ".heex": true, ".twig": true, ".properties": true, ".gradle": true,
	".c": true, ".h": true, ".cpp": true, ".sql": true, ".lock": true, ".json": true,
}

// Size is the size of a file in bytes: from the index where git tracks it,
// else from the disk; 0 where it is not known. Files that a person writes are
// not looked at.
func (t *Tree) Size(e Entry) int64 {
	switch {
	case e.Tracked && e.Size > 0:
		return e.Size
	case !e.OnDisk || e.Link || written[path.Ext(e.Path)]:
		return 0
	}
	info, err := t.root.Lstat(filepath.FromSlash(e.Path))
	if err != nil || !info.Mode().IsRegular() {
		return 0
	}
	return info.Size()
}

// Pointer reports whether a file is only a pointer to a large file that is
// kept elsewhere (git-lfs, "Pointer file").
func (t *Tree) Pointer(p string) bool {
	e, ok := t.Find(p)
	if !ok || !e.OnDisk {
		return false
	}
	if t.Route == Git && e.Tracked && t.Attributes(p).Filter == "lfs" {
		return true
	}
	if size := t.Size(e); size == 0 || size > 300 {
		return false
	}
	f, err := t.Code(p)
	return err == nil && strings.HasPrefix(string(f.Data), "version https://git-lfs.github.com/spec/")
}

// Executable reports whether a file reaches the host with its execute bit: as
// git tracks it, else as it is on the disk. Links are taken as executable:
// what they lead to has its own bit.
func (t *Tree) Executable(p string) bool {
	e, ok := t.Find(p)
	if !ok || e.Tracked || e.Link {
		return !ok || e.Exec || e.Link
	}
	info, err := t.root.Lstat(filepath.FromSlash(e.Path))
	return err != nil || info.Mode()&0o111 != 0
}
