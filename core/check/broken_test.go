package check_test

import (
	"math/rand/v2"
	"os"
	"path"
	"path/filepath"
	"strings"
	"testing"

	"ubique/core/check"
)

// spoil changes some bytes of a text: others in their place, none, one more.
func spoil(r *rand.Rand, text string) string {
	b := []byte(text)
	const signs = "{}[]()\"'<>=:,;#@$%&*|\\!?\n 0aZ"
	for range 1 + r.IntN(8) {
		if len(b) == 0 {
			break
		}
		i, sign := r.IntN(len(b)), signs[r.IntN(len(signs))]
		switch r.IntN(4) {
		case 0:
			b[i] = sign
		case 1:
			b = append(b[:i], b[i+1:]...)
		case 2:
			b[i] = b[r.IntN(len(b))]
		case 3:
			b = append(b[:i], append([]byte{sign}, b[i:]...)...)
		}
	}
	return string(b)
}

// TestSpoiltTrees breaks the files of the trees of the other tests, and asks
// that every one is read to an end without a fault of ours.
func TestSpoiltTrees(t *testing.T) {
	t.Parallel()
	hosts, err := check.Hosts(nil)
	if err != nil {
		t.Fatal(err)
	}
	r := rand.New(rand.NewPCG(5, 6))
	var trees []string
	for _, file := range []string{"placed_test.go", "ecosystems_test.go", "runtimes_test.go", "manifest_test.go", "start_test.go", "rust_test.go"} {
		data, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		for s := range strings.SplitSeq(string(data), "`") {
			if strings.Contains(s, "\n-- ") {
				trees = append(trees, s)
			}
		}
	}
	for n := range 600 {
		dir := t.TempDir()
		name := ""
		for part := range strings.SplitSeq(trees[r.IntN(len(trees))], "\n-- ") {
			head, body, _ := strings.Cut(part, " --\n")
			name, _, _ = strings.Cut(strings.TrimPrefix(head, "-- "), " ")
			if name = path.Clean(name); name == "." || strings.HasPrefix(name, "..") || path.IsAbs(name) || strings.ContainsAny(name, "\n\t`") {
				continue
			}
			p := filepath.Join(dir, filepath.FromSlash(name))
			if os.MkdirAll(filepath.Dir(p), 0o755) != nil {
				continue
			}
			_ = os.WriteFile(p, []byte(spoil(r, body)), 0o644)
		}
		report, err := check.Run(check.Options{Dir: dir, Hosts: hosts, Rules: n%3 > 0, Today: "2026-11-26"})
		if err != nil {
			t.Fatal(err)
		}
		for _, u := range report.Unknown {
			if strings.Contains(u.Reason, "a fault in Ubique") {
				t.Fatalf("%s, in a tree with a spoilt %s", u.Reason, name)
			}
		}
	}
}
