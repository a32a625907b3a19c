package main_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
)

// TestHostileTree gives the program a tree with all that can be wrong with
// files, and a sound and a broken component in the middle of it.
func TestHostileTree(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, map[string]string{
		"good/package.json":             sound["package.json"],
		"good/server.js":                sound["server.js"],
		"bad/package.json":              "{\n  \"name\": \"bad\",\n  \"scripts\": { \"start\": \"node server.js\", }\n}\n",
		"bad/Dockerfile":                "FROM node:24\nCOPPY . .\n",
		"bad/compose.yaml":              "services:\n\tweb: {}\n",
		"deep/package.json":             sound["package.json"],
		"deep/server.js":                strings.Repeat("if (a) {", 30_000) + strings.Repeat("(", 30_000),
		"circle/package.json":           "{ \"name\": \"circle\", \"engines\": { \"node\": \"24\" }, \"scripts\": { \"start\": \"npm run again\", \"again\": \"npm start\" } }\n",
		"binary/package.json":           sound["package.json"],
		"binary/server.js":              "\xff\xfe\x00\x01listen(3000)",
		"one-line/package.json":         sound["package.json"],
		"one-line/server.js":            "var a=1;" + strings.Repeat("b(1);", 100_000),
		"name\x1b]0;x\x07/README.md":    "",
		"requirements/app.py":           "from flask import Flask\napp = Flask(__name__)\n",
		"requirements/Procfile":         "web: gunicorn app:app\n",
		"requirements/requirements.txt": "-r requirements.txt\n-r ../../outside.txt\nflask==3\n",
		"bomb/package.json":             strings.Repeat("[", 20_000),
	})
	outside := filepath.Join(t.TempDir(), "outside.js")
	if err := os.WriteFile(outside, []byte("a secret of another folder"), 0o600); err != nil {
		t.Fatal(err)
	}
	for link, to := range map[string]string{"loop": "loop", "good/out.js": outside, "up": "../..", "good/self": ".", "gone": "nowhere"} {
		if err := os.Symlink(to, filepath.Join(dir, link)); err != nil {
			t.Fatal(err)
		}
	}
	if err := syscall.Mkfifo(filepath.Join(dir, "good", "pipe.js"), 0o644); err != nil {
		t.Fatal(err)
	}
	if err := syscall.Mkfifo(filepath.Join(dir, "Procfile"), 0o644); err != nil {
		t.Fatal(err)
	}
	big, err := os.Create(filepath.Join(dir, "good", "big.js"))
	if err != nil {
		t.Fatal(err)
	}
	if err := big.Truncate(2 << 30); err != nil {
		t.Log("the file system has no sparse files")
	}
	big.Close()

	r := ubique(t, dir, "check")
	if r.status != 1 || r.err != "" {
		t.Fatalf("it ends with %d: %s", r.status, r.err)
	}
	for _, want := range []string{
		"bad/package.json:3:41", "bad/Dockerfile:2:1", "bad/compose.yaml:2:2", "bomb/package.json:1:501",
		"loop  what is in it: a link that leads to itself", "up  what is in it: a link that leads out of the tree", "good/pipe.js  what is in it: not a regular file", "Procfile  what is in it: not a regular file",
		"from script to script without an end",
	} {
		if !strings.Contains(r.out, want) {
			t.Errorf("it does not say %q", want)
		}
	}
	for _, not := range []string{"good/server.js", "a secret of another folder", "a fault in Ubique", "\x1b", "\x07"} {
		if strings.Contains(r.out, not) {
			t.Errorf("it says %q", not)
		}
	}
	if t.Failed() {
		t.Log(r.out)
	}
	for _, args := range [][]string{{"survey", "--with", "PORT=1"}, {"matrix"}, {"check", "--format", "json"}, {"check", "--format", "sarif"}} {
		a, b := ubique(t, dir, args...), ubique(t, dir, args...)
		if a.out != b.out || a.status > 1 {
			t.Errorf("ubique %v ends with %d and is the same at every run: %v", args, a.status, a.out == b.out)
		}
	}
}

// TestLargeTree is a tree of many files of which few matter.
func TestLargeTree(t *testing.T) {
	dir := t.TempDir()
	write(t, dir, sound)
	files := map[string]string{}
	for i := range 3000 {
		files[fmt.Sprintf("data/%03d/star-%d.json", i%50, i)] = "{}"
	}
	write(t, dir, files)
	m, r := report(t, dir, "check")
	if r.status != 0 || m["tree"].(map[string]any)["shipped"].(float64) != 3002 {
		t.Errorf("it ends with %d and ships %v files", r.status, m["tree"])
	}
}
