// Package demo writes the demo tree: the services of a small observatory that
// opens its dome to the public on clear nights. Some are troubled, some are
// sound; all are made up.
package demo

import (
	"bytes"
	"compress/zlib"
	"crypto/sha1"
	"embed"
	"fmt"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"strings"

	"github.com/go-git/go-git/v5/plumbing"
	"github.com/go-git/go-git/v5/plumbing/filemode"
	"github.com/go-git/go-git/v5/plumbing/format/index"
)

// The tree as it is embedded: names that begin with a dot are written
// "dot-NAME", so that they do not act on the repository that holds them.
//
//go:embed all:tree
var tree embed.FS

// untracked are the files that were never added to git: one that is needed,
// which is among the most common reasons why a host fails.
var untracked = map[string]bool{"bookings/src/nights.js": true}

// Files gives the files of the demo tree by their paths.
func Files() (map[string][]byte, error) {
	files := map[string][]byte{}
	err := fs.WalkDir(tree, "tree", func(p string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		data, err := tree.ReadFile(p)
		if err != nil {
			return err
		}
		name := strings.TrimPrefix(p, "tree/")
		dir, base := path.Split(name)
		if rest, ok := strings.CutPrefix(base, "dot-"); ok {
			name = dir + "." + rest
		}
		files[name] = data
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("reading the demo tree: %w", err)
	}
	return files, nil
}

// Write writes the demo tree with its git repository to dir, which is made
// where it does not exist. Nothing that is there already is written over.
func Write(dir string) error {
	files, err := Files()
	if err != nil {
		return err
	}
	for name, data := range files {
		if err := create(filepath.Join(dir, filepath.FromSlash(name)), data); err != nil {
			return fmt.Errorf("writing the demo tree: %w", err)
		}
	}
	for name := range untracked {
		delete(files, name)
	}
	return Track(dir, files)
}

func create(name string, data []byte) error {
	if err := os.MkdirAll(filepath.Dir(name), 0o755); err != nil {
		return err
	}
	f, err := os.OpenFile(name, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
	if err != nil {
		return err
	}
	if _, err := f.Write(data); err != nil {
		f.Close()
		return err
	}
	return f.Close()
}

// Track makes a folder a git repository without a commit: its index tracks the
// files, which must be there, as `git add` would have left it
// (gitrepository-layout(5)). Files with an execute bit keep it.
func Track(dir string, files map[string][]byte) error {
	if err := repository(dir, files); err != nil {
		return fmt.Errorf("writing a git index: %w", err)
	}
	return nil
}

func repository(dir string, files map[string][]byte) error {
	git := filepath.Join(dir, ".git")
	plain := map[string]string{
		"HEAD":         "ref: refs/heads/main\n",
		"config":       "[core]\n\trepositoryformatversion = 0\n\tfilemode = true\n\tbare = false\n",
		"info/exclude": "",
	}
	for name, text := range plain {
		if err := create(filepath.Join(git, filepath.FromSlash(name)), []byte(text)); err != nil {
			return err
		}
	}
	if err := os.MkdirAll(filepath.Join(git, "refs", "heads"), 0o755); err != nil {
		return err
	}
	idx := &index.Index{Version: 2}
	for name, data := range files {
		hash, err := object(git, data)
		if err != nil {
			return err
		}
		e := &index.Entry{Name: name, Hash: hash, Mode: filemode.Regular, Size: uint32(len(data))}
		// A file may be tracked and gone from the disk.
		if info, err := os.Stat(filepath.Join(dir, filepath.FromSlash(name))); err == nil {
			if info.Mode()&0o111 != 0 {
				e.Mode = filemode.Executable
			}
			e.CreatedAt, e.ModifiedAt = info.ModTime(), info.ModTime()
		}
		idx.Entries = append(idx.Entries, e)
	}
	f, err := os.Create(filepath.Join(git, "index"))
	if err != nil {
		return err
	}
	if err := index.NewEncoder(f).Encode(idx); err != nil {
		f.Close()
		return err
	}
	return f.Close()
}

// object writes a blob as a loose object and gives its name.
func object(git string, data []byte) (plumbing.Hash, error) {
	content := append(fmt.Appendf(nil, "blob %d\x00", len(data)), data...)
	hash := plumbing.Hash(sha1.Sum(content))
	name := filepath.Join(git, "objects", hash.String()[:2], hash.String()[2:])
	if _, err := os.Stat(name); err == nil {
		return hash, nil
	}
	var packed bytes.Buffer
	w := zlib.NewWriter(&packed)
	if _, err := w.Write(content); err != nil {
		return hash, err
	}
	if err := w.Close(); err != nil {
		return hash, err
	}
	return hash, create(name, packed.Bytes())
}
