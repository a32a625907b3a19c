package version_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"ubique/core/version"
)

func v(a, b, c int) version.Version { return version.Version{N: [4]int{a, b, c}} }

func TestRangesHoldWhatTheirGrammarSays(t *testing.T) {
	read := map[string]func(string) (version.Set, bool){"npm": version.NPM, "pep": version.PEP440, "prefix": version.Prefix}
	for _, c := range []struct {
		kind, text string
		in, out    []version.Version
	}{
		{"npm", "24.x", []version.Version{v(24, 0, 0), v(24, 99, 1)}, []version.Version{v(23, 9, 9), v(25, 0, 0)}},
		{"npm", "24", []version.Version{v(24, 5, 0)}, []version.Version{v(25, 0, 0)}},
		{"npm", ">=18", []version.Version{v(18, 0, 0), v(99, 0, 0)}, []version.Version{v(17, 9, 9)}},
		{"npm", ">18", []version.Version{v(19, 0, 0)}, []version.Version{v(18, 5, 0)}},
		{"npm", "<=18", []version.Version{v(18, 9, 9)}, []version.Version{v(19, 0, 0)}},
		{"npm", "^20.9.0", []version.Version{v(20, 9, 0), v(20, 10, 0)}, []version.Version{v(20, 8, 9), v(21, 0, 0)}},
		{"npm", "^0.3.1", []version.Version{v(0, 3, 9)}, []version.Version{v(0, 4, 0), v(0, 3, 0)}},
		{"npm", "^0.0.3", []version.Version{v(0, 0, 3)}, []version.Version{v(0, 0, 4)}},
		{"npm", "~1.2", []version.Version{v(1, 2, 9)}, []version.Version{v(1, 3, 0)}},
		{"npm", "~1.2.3", []version.Version{v(1, 2, 9)}, []version.Version{v(1, 2, 2)}},
		{"npm", "1.2 - 2.3", []version.Version{v(1, 2, 0), v(2, 3, 9)}, []version.Version{v(2, 4, 0), v(1, 1, 9)}},
		{"npm", ">=20 <23 || 24", []version.Version{v(22, 9, 0), v(24, 1, 0)}, []version.Version{v(23, 0, 0), v(25, 0, 0)}},
		{"npm", ">= 20", []version.Version{v(20, 0, 0)}, []version.Version{v(19, 0, 0)}},
		{"npm", "*", []version.Version{v(0, 0, 1), v(99, 0, 0)}, nil},
		{"npm", "", []version.Version{v(1, 0, 0)}, nil},
		{"npm", "v22.1.0", []version.Version{v(22, 1, 0)}, []version.Version{v(22, 1, 1)}},
		{"pep", ">=3.10,<3.14", []version.Version{v(3, 10, 0), v(3, 13, 9)}, []version.Version{v(3, 14, 0), v(3, 9, 9)}},
		{"pep", "~=3.11", []version.Version{v(3, 11, 0), v(3, 99, 0)}, []version.Version{v(4, 0, 0)}},
		{"pep", "~=3.11.2", []version.Version{v(3, 11, 9)}, []version.Version{v(3, 12, 0), v(3, 11, 1)}},
		{"pep", "==3.12.*", []version.Version{v(3, 12, 7)}, []version.Version{v(3, 13, 0)}},
		{"pep", "==3.12", []version.Version{v(3, 12, 0)}, []version.Version{v(3, 12, 1)}},
		{"pep", "!=3.11.*,>=3.10", []version.Version{v(3, 10, 5), v(3, 12, 0)}, []version.Version{v(3, 11, 5)}},
		{"pep", "^3.12", []version.Version{v(3, 12, 0), v(3, 99, 0)}, []version.Version{v(4, 0, 0)}},
		{"pep", "3.12", []version.Version{v(3, 12, 4)}, []version.Version{v(3, 13, 0)}},
		{"prefix", "20.11", []version.Version{v(20, 11, 5)}, []version.Version{v(20, 12, 0)}},
		{"prefix", "v20.11.1", []version.Version{v(20, 11, 1)}, []version.Version{v(20, 11, 2)}},
		{"prefix", "3", []version.Version{v(3, 99, 0)}, []version.Version{v(4, 0, 0)}},
	} {
		s, ok := read[c.kind](c.text)
		if !ok {
			t.Errorf("%s %q is not understood", c.kind, c.text)
			continue
		}
		for _, x := range c.in {
			if !s.Has(x) {
				t.Errorf("%s %q (%s) does not hold %s", c.kind, c.text, s, x)
			}
		}
		for _, x := range c.out {
			if s.Has(x) {
				t.Errorf("%s %q (%s) holds %s", c.kind, c.text, s, x)
			}
		}
	}
	for kind, texts := range map[string][]string{"npm": {"latest", "lts/*", "git+https://x", "file:../a", "1.2.y", "workspace:*"}, "pep": {"python3", ">=", "~=3", "3.x.y.z.w"}, "prefix": {"lts/iron", "slim", "", "bookworm", "python-3.11"}} {
		for _, text := range texts {
			if s, ok := read[kind](text); ok {
				t.Errorf("%s %q is taken for %s", kind, text, s)
			}
		}
	}
}

func TestPreReleasesStandBeforeTheirRelease(t *testing.T) {
	a, ok1 := version.Prefix("3.14.0rc1")
	b, ok2 := version.PEP440(">=3.14")
	if !ok1 || !ok2 || !a.Intersect(b).Empty() {
		t.Error("a candidate counts as the release")
	}
	for i, pair := range [][2]string{{"a.1", "a.2"}, {"a.2", "a.10"}, {"a.1", "a.b"}, {"a", "a.1"}} {
		x, y := version.Version{Pre: pair[0]}, version.Version{Pre: pair[1]}
		if x.Compare(y) >= 0 || y.Compare(x) <= 0 {
			t.Errorf("pair %d: %s does not stand before %s", i, pair[0], pair[1])
		}
	}
}

func TestString(t *testing.T) {
	for text, want := range map[string]string{"24.x": "24.x", "^20.9": ">=20.9 <21", ">=18": ">=18", "*": "any version", "<20": "<20", "1.2.3": "1.2.3", "20 || 22": "20.x or 22.x", ">=2 <1": "no version", "~1.2": "1.2.x", ">=1.2.3 <=1.4": ">=1.2.3 <1.5"} {
		s, ok := version.NPM(text)
		if !ok || s.String() != want {
			t.Errorf("%q is shown as %q, not %q", text, s, want)
		}
	}
	if s, _ := version.Prefix("20.11.1"); s.String() != "20.11.1" {
		t.Errorf("a whole version is shown as %q", s)
	}
}

// random makes a range of small numbers, so that ends often meet.
func random(r *rand.Rand) string {
	n := func() string { return fmt.Sprintf("%d.%d.%d", r.IntN(3), r.IntN(3), r.IntN(3)) }
	switch r.IntN(8) {
	case 0:
		return "^" + n()
	case 1:
		return "~" + n()
	case 2:
		return ">=" + n() + " <" + n()
	case 3:
		return ">" + n()
	case 4:
		return "<=" + n()
	case 5:
		return n() + " || " + n()
	case 6:
		return fmt.Sprintf("%d.%d", r.IntN(3), r.IntN(3))
	}
	return n() + " - " + n()
}

// TestAlgebra compares the sets with membership, version by version.
func TestAlgebra(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	var all []version.Version
	for a := range 4 {
		for b := range 4 {
			for c := range 4 {
				all = append(all, v(a, b, c))
			}
		}
	}
	for range 3000 {
		x, y := random(r), random(r)
		a, ok1 := version.NPM(x)
		b, ok2 := version.NPM(y)
		if !ok1 || !ok2 {
			t.Fatalf("%q or %q is not understood", x, y)
		}
		both, either := a.Intersect(b), a.Union(b)
		any, inside := false, true
		for _, p := range all {
			if both.Has(p) != (a.Has(p) && b.Has(p)) {
				t.Fatalf("%s in both %q and %q: %v", p, x, y, both.Has(p))
			}
			if either.Has(p) != (a.Has(p) || b.Has(p)) {
				t.Fatalf("%s in either of %q and %q: %v", p, x, y, either.Has(p))
			}
			any = any || both.Has(p)
			inside = inside && (!a.Has(p) || b.Has(p))
		}
		if any && both.Empty() {
			t.Fatalf("%q and %q have versions in common, and their intersection is empty", x, y)
		}
		if a.Within(b) && !inside {
			t.Fatalf("%q is said to lie within %q", x, y)
		}
		if a.Intersect(b).String() != b.Intersect(a).String() || a.Union(b).String() != b.Union(a).String() {
			t.Fatalf("the order of %q and %q matters", x, y)
		}
		if !a.Within(a) || !both.Within(a) || !a.Within(either) || !a.Within(version.All) {
			t.Fatalf("%q or %q is not within what holds it", x, y)
		}
	}
}

func TestBounded(t *testing.T) {
	for text, want := range map[string]bool{"^1": true, ">=1": false, "*": false, "1.2.3": true, "<2": true, "1 || >=3": false} {
		s, _ := version.NPM(text)
		if s.Bounded() != want {
			t.Errorf("%q has an upper end: %v", text, s.Bounded())
		}
	}
}

func FuzzRanges(f *testing.F) {
	f.Add(">=1.2 <3 || ~4.5.6-rc.1")
	f.Fuzz(func(t *testing.T, text string) {
		for _, read := range []func(string) (version.Set, bool){version.NPM, version.PEP440, version.Prefix} {
			if s, ok := read(text); ok {
				if !s.Within(version.All) || s.Intersect(s).String() != s.String() {
					t.Fatalf("%q makes a set that is not one: %s", text, s)
				}
			}
		}
	})
}
