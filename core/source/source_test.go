package source_test

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"ubique/core/source"
	"ubique/demo"
)

func write(t *testing.T, dir string, files map[string]string) {
	t.Helper()
	for name, text := range files {
		p := filepath.Join(dir, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(p), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(p, []byte(text), 0o644); err != nil {
			t.Fatal(err)
		}
	}
}

func track(t *testing.T, dir string, files map[string]string) {
	t.Helper()
	m := map[string][]byte{}
	for name, text := range files {
		m[name] = []byte(text)
	}
	if err := demo.Track(dir, m); err != nil {
		t.Fatal(err)
	}
}

func open(t *testing.T, dir string) *source.Tree {
	t.Helper()
	tr, err := source.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { tr.Close() })
	return tr
}

func paths(tr *source.Tree) string {
	var list []string
	for _, e := range tr.Entries {
		list = append(list, e.Path)
	}
	return strings.Join(list, " ")
}

func states(t *testing.T, tr *source.Tree, want map[string]source.State) {
	t.Helper()
	for p, s := range want {
		if got := tr.State(p); got != s {
			t.Errorf("the state of %s is %d, not %d", p, got, s)
		}
	}
}

func TestUploadIsTheFolderLessItsRules(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{
		"a.js": "", "b/c.js": "", "node_modules/x/index.js": "", "b/venv/lib.py": "", "env/pyvenv.cfg": "", "env/lib/x.py": "", "d.log": "", "b/keep.log": "",
		".gitignore": "*.log\n!keep.log\n/tmp/\n", "tmp/x": "", "b/tmp/y": "", "__pycache__/a.pyc": "",
	})
	tr := open(t, dir)
	if tr.Route != source.Upload {
		t.Errorf("the route is %s", tr.Route)
	}
	if got := paths(tr); got != ".gitignore a.js b/c.js b/keep.log b/tmp/y d.log tmp/x" {
		t.Errorf("the entries are %s", got)
	}
	states(t, tr, map[string]source.State{"a.js": source.Shipped, "d.log": source.Ignored, "b/keep.log": source.Shipped, "tmp/x": source.Ignored, "b/tmp/y": source.Shipped, "gone": source.Absent, "node_modules/x/index.js": source.Absent})
	if got := strings.Join(tr.Skipped, " "); got != "__pycache__ b/venv env node_modules" {
		t.Errorf("what was not entered is %s", got)
	}
	if tr.Shipped != 5 {
		t.Errorf("%d files ship, not 5", tr.Shipped)
	}
	if !tr.HasDir("b") || tr.HasDir("c") || !tr.HasDir("") || tr.Has("b") {
		t.Error("folders and files are mixed up")
	}
}

func TestGitShipsWhatItTracks(t *testing.T) {
	dir := t.TempDir()
	files := map[string]string{"a.js": "a", "b/c.js": "c", "run.sh": "#!/bin/sh\n", "node_modules/x/index.js": "", "gone.js": ""}
	write(t, dir, files)
	if err := os.Chmod(filepath.Join(dir, "run.sh"), 0o755); err != nil {
		t.Fatal(err)
	}
	track(t, dir, files)
	if err := os.Remove(filepath.Join(dir, "gone.js")); err != nil {
		t.Fatal(err)
	}
	write(t, dir, map[string]string{"new.js": "", "b/new.js": "", "secret.txt": "", ".git/info/exclude": "secret.*\n"})
	tr := open(t, dir)
	if tr.Route != source.Git {
		t.Errorf("the route is %s", tr.Route)
	}
	states(t, tr, map[string]source.State{"a.js": source.Shipped, "b/c.js": source.Shipped, "new.js": source.Untracked, "b/new.js": source.Untracked, "secret.txt": source.Ignored, "gone.js": source.Absent, "node_modules/x/index.js": source.Shipped})
	if e, _ := tr.Find("run.sh"); !e.Exec || !e.Tracked {
		t.Error("the execute bit of the index is lost")
	}
	if e, ok := tr.Find("gone.js"); !ok || e.OnDisk {
		t.Error("a tracked file that is not on the disk is not known")
	}
	if at, ok := tr.IgnoreRule("a.js"); ok {
		t.Errorf("a rule at %s keeps out what is not kept out", at)
	}
	// A folder below the top of the work tree is a tree of its own.
	sub := open(t, filepath.Join(dir, "b"))
	if got := paths(sub); got != "c.js new.js" || sub.Route != source.Git {
		t.Errorf("below the top the entries are %s by %s", got, sub.Route)
	}
	states(t, sub, map[string]source.State{"c.js": source.Shipped, "new.js": source.Untracked})
}

func TestIgnoreFilesAbove(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{".gitignore": "*.tmp\nsvc/out\n", "svc/a.js": "", "svc/b.tmp": "", "svc/out/x.js": "", "svc/.gitignore": "!b.tmp\nlocal/*\n!local/keep\n", "svc/local/x": "", "svc/local/keep": ""})
	track(t, dir, map[string]string{"svc/a.js": ""})
	tr := open(t, filepath.Join(dir, "svc"))
	states(t, tr, map[string]source.State{"a.js": source.Shipped, "b.tmp": source.Untracked, "out/x.js": source.Ignored, "local/x": source.Ignored, "local/keep": source.Untracked})
	if at, ok := tr.IgnoreRule("local/x"); !ok || at.File != ".gitignore" || at.Line != 2 {
		t.Errorf("the rule is at %s, %v", at, ok)
	}
}

func TestWorktreesAndGitFiles(t *testing.T) {
	main := t.TempDir()
	write(t, main, map[string]string{"a.js": ""})
	track(t, main, map[string]string{"a.js": ""})
	write(t, main, map[string]string{".git/info/exclude": "*.log\n"})
	// A linked worktree has its index under .git/worktrees and shares the rest.
	linked := t.TempDir()
	write(t, linked, map[string]string{"a.js": "", "x.log": "", "new.js": ""})
	index, err := os.ReadFile(filepath.Join(main, ".git", "index"))
	if err != nil {
		t.Fatal(err)
	}
	write(t, main, map[string]string{".git/worktrees/w/HEAD": "ref: refs/heads/w\n", ".git/worktrees/w/commondir": "../..\n", ".git/worktrees/w/index": string(index)})
	write(t, linked, map[string]string{".git": "gitdir: " + filepath.Join(main, ".git", "worktrees", "w") + "\n"})
	tr := open(t, linked)
	states(t, tr, map[string]source.State{"a.js": source.Shipped, "x.log": source.Ignored, "new.js": source.Untracked})

	odd := t.TempDir()
	write(t, odd, map[string]string{".git": "nonsense\n", "a.js": ""})
	tr = open(t, odd)
	if tr.Route != source.Upload || len(tr.Problems()) != 1 || tr.Problems()[0].Path != ".git" {
		t.Errorf("a .git file that says nothing: route %s, %v", tr.Route, tr.Problems())
	}

	broken := t.TempDir()
	write(t, broken, map[string]string{".git/HEAD": "ref: refs/heads/main\n", ".git/index": "DIRCnot an index", "a.js": ""})
	tr = open(t, broken)
	if tr.Route != source.Upload || len(tr.Problems()) != 1 || tr.State("a.js") != source.Shipped {
		t.Errorf("a broken index: route %s, %v", tr.Route, tr.Problems())
	}
}

func TestWhatIsNotRead(t *testing.T) {
	dir := t.TempDir()
	outside := filepath.Join(t.TempDir(), "secret.js")
	write(t, filepath.Dir(outside), map[string]string{"secret.js": "secret"})
	write(t, dir, map[string]string{"a.js": "a", "sub/b.js": "b", "large.js": strings.Repeat("x", source.CodeLimit+1)})
	for link, to := range map[string]string{"out.js": outside, "loop": "loop", "in.js": "sub/b.js", "dir": "sub", "up": ".."} {
		if err := os.Symlink(to, filepath.Join(dir, link)); err != nil {
			t.Fatal(err)
		}
	}
	if err := syscall.Mkfifo(filepath.Join(dir, "pipe.js"), 0o644); err != nil {
		t.Fatal(err)
	}
	tr := open(t, dir)
	if f, err := tr.Code("in.js"); err != nil || string(f.Data) != "b" {
		t.Errorf("a link inside the tree is not followed: %v", err)
	}
	if f, err := tr.Code("out.js"); err == nil {
		t.Errorf("a link out of the tree was followed to %q", f.Data)
	}
	if _, err := tr.Code("large.js"); !errors.Is(err, source.ErrTooLarge) {
		t.Errorf("a file over the limit gives %v", err)
	}
	if f, err := tr.Document("large.js"); err != nil || len(f.Data) != source.CodeLimit+1 {
		t.Errorf("as a document it is not read: %v", err)
	}
	if _, err := tr.Code("pipe.js"); err == nil {
		t.Error("a pipe was read")
	}
	if _, err := tr.Code("../x"); err == nil {
		t.Error("a path out of the tree was read")
	}
	if tr.Has("dir/b.js") {
		t.Error("the walk went through a link")
	}
	got := map[string]int{}
	for _, p := range tr.Problems() {
		got[p.Path]++
	}
	for _, p := range []string{"out.js", "loop", "up", "pipe.js", "large.js"} {
		if got[p] != 1 {
			t.Errorf("%s is reported %d times", p, got[p])
		}
	}
}

func TestUnreadableFolder(t *testing.T) {
	if os.Geteuid() == 0 {
		t.Skip("root reads every folder")
	}
	dir := t.TempDir()
	write(t, dir, map[string]string{"a.js": "", "shut/b.js": ""})
	if err := os.Chmod(filepath.Join(dir, "shut"), 0); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.Chmod(filepath.Join(dir, "shut"), 0o755) })
	if tr := open(t, dir); len(tr.Problems()) != 1 || tr.Problems()[0].Path != "shut" {
		t.Errorf("the folder that is shut: %v", tr.Problems())
	}
}

func TestOpenErrors(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{"a.js": ""})
	if _, err := source.Open(filepath.Join(dir, "none")); err == nil {
		t.Error("a folder that is not there was opened")
	}
	if _, err := source.Open(filepath.Join(dir, "a.js")); err == nil || !strings.Contains(err.Error(), "is a file") {
		t.Errorf("a file is opened as a tree: %v", err)
	}
}

func TestJoin(t *testing.T) {
	for _, c := range []struct {
		dir, rel, want string
		ok             bool
	}{{"a", "b", "a/b", true}, {"a", "../b", "b", true}, {"a", "../../b", "", false}, {"", ".", "", true}, {"a", "/b", "", false}, {"a/b", "./../c/./d", "a/c/d", true}} {
		if got, ok := source.Join(c.dir, c.rel); got != c.want || ok != c.ok {
			t.Errorf("%s and %s give %q, %v", c.dir, c.rel, got, ok)
		}
	}
}

func TestDeepFolders(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{strings.Repeat("d/", 80) + "x.js": "", "a.js": ""})
	tr := open(t, dir)
	if len(tr.Problems()) != 1 || !strings.Contains(tr.Problems()[0].Reason, "deep") {
		t.Errorf("folders below folders without end: %v", tr.Problems())
	}
}

func TestForgetReadsAgain(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{"a/x.js": "one"})
	tr := open(t, dir)
	if f, err := tr.Code("a/x.js"); err != nil || string(f.Data) != "one" {
		t.Fatal(err)
	}
	write(t, dir, map[string]string{"a/x.js": "two"})
	if f, _ := tr.Code("a/x.js"); string(f.Data) != "one" {
		t.Error("a file was read twice")
	}
	tr.Forget("a")
	if f, _ := tr.Code("a/x.js"); string(f.Data) != "two" {
		t.Error("what was let go of is not read again")
	}
}
