package check_test

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"ubique/core/check"
	"ubique/core/rules"
	"ubique/demo"
)

// A tree is written as text: a line "-- PATH --" begins each file. A word
// after the path says more: "gone" (tracked, and not on disk), "untracked" (the tree then has a git index that
// tracks all other files), "exec" (it has its execute bit). A path that ends
// in /.git makes the folder a repository all the same.
func plant(t *testing.T, text string) string {
	t.Helper()
	dir := t.TempDir()
	tracked := map[string][]byte{}
	git := false
	var name, mark string
	var body strings.Builder
	flush := func() {
		if name == "" {
			return
		}
		if name == ".git" {
			git = true
			return
		}
		if strings.Contains(mark, "gone") {
			git = true
			tracked[name] = []byte(body.String())
			return
		}
		p := filepath.Join(dir, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(p), 0o755); err != nil {
			t.Fatal(err)
		}
		mode := os.FileMode(0o644)
		if strings.Contains(mark, "exec") {
			mode = 0o755
		}
		if err := os.WriteFile(p, []byte(body.String()), mode); err != nil {
			t.Fatal(err)
		}
		if strings.Contains(mark, "untracked") {
			git = true
		} else {
			tracked[name] = []byte(body.String())
		}
	}
	for line := range strings.SplitAfterSeq(strings.TrimPrefix(text, "\n"), "\n") {
		if rest, ok := strings.CutPrefix(line, "-- "); ok && strings.HasSuffix(strings.TrimSpace(rest), "--") {
			flush()
			body.Reset()
			head := strings.TrimSuffix(strings.TrimSpace(rest), " --")
			name, mark, _ = strings.Cut(head, " ")
			continue
		}
		body.WriteString(line)
	}
	flush()
	if git {
		if err := demo.Track(dir, tracked); err != nil {
			t.Fatal(err)
		}
	}
	return dir
}

func run(t *testing.T, dir string, with map[string]string) *check.Report {
	t.Helper()
	hosts, err := check.Hosts(nil)
	if err != nil {
		t.Fatal(err)
	}
	r, err := check.Run(check.Options{Dir: dir, Hosts: hosts, Rules: true, With: with, Today: "2026-11-26"})
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// show writes a finding as the tests expect it: rule, place, and the level on
// each host.
func show(f rules.Finding) string {
	var on []string
	for _, h := range f.Hosts {
		on = append(on, fmt.Sprintf("%s=%s", h.Host, h.Level))
	}
	where := f.Where.File
	if f.Where.Line > 0 {
		where = fmt.Sprintf("%s:%d", f.Where.File, f.Where.Line)
	}
	return strings.TrimSpace(fmt.Sprintf("%s %s %s", f.Rule, where, strings.Join(on, " ")))
}

// ruleCase is a tree with all the findings that it must give, no more and no
// less; without findings it is the sound twin of another.
type ruleCase struct {
	name string
	tree string
	want []string
}

func runCases(t *testing.T, cases []ruleCase) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			r := run(t, plant(t, c.tree), nil)
			var got []string
			for _, f := range r.Findings {
				// Most trees here have no lock and declare no variables; only those
				// of the rules say so.
				if f.Rule == "env/undeclared" && !strings.Contains(strings.Join(c.want, " "), "env/") {
					continue
				}
				if f.Rule == "manifest/lock-missing" && !strings.Contains(strings.Join(c.want, " "), f.Rule) && !strings.Contains(c.name, "lock") {
					continue
				}
				got = append(got, show(f))
				if f.Message == "" || f.Fingerprint == "" || f.Remedy == "" {
					t.Errorf("%s lacks a message, a remedy or a fingerprint: %+v", f.Rule, f)
				}
			}
			slices.Sort(got)
			want := slices.Sorted(slices.Values(c.want))
			if !slices.Equal(got, want) {
				t.Errorf("found\n\t%s\nwanted\n\t%s", strings.Join(got, "\n\t"), strings.Join(want, "\n\t"))
				for _, f := range r.Findings {
					t.Logf("%s: %s", f.Where, f.Message)
				}
				for _, u := range r.Unknown {
					t.Logf("could not tell %s: %s (%s)", u.Question, u.Reason, u.At)
				}
			}
		})
	}
}

// finding gives the only finding of a rule in a report.
func finding(t *testing.T, r *check.Report, rule string) rules.Finding {
	t.Helper()
	var list []rules.Finding
	for _, f := range r.Findings {
		if f.Rule == rule {
			list = append(list, f)
		}
	}
	if len(list) != 1 {
		t.Fatalf("there are %d findings of %s, not one: %v", len(list), rule, r.Findings)
	}
	return list[0]
}
