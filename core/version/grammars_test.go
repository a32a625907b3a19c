package version_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"ubique/core/version"
)

// parse reads a version of a test.
func parse(t *testing.T, s string) version.Version {
	t.Helper()
	p, ok := version.Parse(s)
	if !ok {
		t.Fatalf("the version %q is not understood", s)
	}
	return p
}

func TestEcosystems(t *testing.T) {
	read := map[string]func(string) (version.Set, bool){
		"gem": version.Gem, "elixir": version.Elixir, "composer": version.Composer, "cargo": version.Cargo, "maven": version.Maven,
		"nuget": version.NuGet, "tfm": version.TFM, "go": version.Go, "java": version.Java, "npm": version.NPM, "pep": version.PEP440, "least": version.AtLeast,
	}
	for _, c := range []struct{ kind, text, in, out string }{
		{"gem", "~> 3.2.1", "3.2.1 3.2.9", "3.2.0 3.3.0 3.3.0.pre1"},
		{"gem", "~> 3.2", "3.2.0 3.9.9", "4.0.0 3.1.9"},
		{"gem", "~> 3", "3.0.0 3.9", "4.0"},
		{"gem", ">= 1.2, < 2", "1.2.0 1.9", "2.0.0 1.1.9"},
		{"gem", "!= 1.3", "1.2 1.4", "1.3.0"},
		{"gem", "7.1.3", "7.1.3", "7.1.4 7.1.3.1"},
		{"gem", ">= 8.0.0.beta1", "8.0.0.beta2 8.0.0", "8.0.0.alpha1"},
		{"elixir", "~> 1.15", "1.15.0 1.19.2", "2.0.0 1.14.9"},
		{"elixir", ">= 1.14.0 and < 1.17.0", "1.16.3", "1.17.0 1.13.4"},
		{"elixir", "~> 1.14.2 or ~> 1.16", "1.14.3 1.17.0", "1.15.0"},
		{"composer", "^8.2", "8.2.0 8.9.1", "9.0.0 8.1.9"},
		{"composer", "^0.3", "0.3.9", "0.4.0"},
		{"composer", "~1.2", "1.2.0 1.9.9", "2.0.0"},
		{"composer", "~1.2.3", "1.2.9", "1.3.0 1.2.2"},
		{"composer", "8.1.*", "8.1.27", "8.2.0"},
		{"composer", ">=8.1 <8.4", "8.3.1", "8.4.0"},
		{"composer", ">= 8.1, < 8.4", "8.3.1", "8.0.9"},
		{"composer", "^7.4|^8.0", "7.4.1 8.3.0", "9.0.0"},
		{"composer", "1.0 - 2.1", "1.0.0 2.1.9", "2.2.0"},
		{"composer", "v5.4.1", "5.4.1", "5.4.2"},
		{"composer", "^11.0@beta", "11.0.1", "12.0.0"},
		{"cargo", "1.2.3", "1.2.3 1.9.0", "2.0.0 1.2.2"},
		{"cargo", "0.7", "0.7.9", "0.8.0"},
		{"cargo", "=1.2.3", "1.2.3", "1.2.4"},
		{"cargo", ">=1.2, <1.5", "1.4.9", "1.5.0"},
		{"cargo", "1.*", "1.0.0 1.9.0", "2.0.0"},
		{"cargo", "*", "0.0.1 9.0.0", ""},
		{"cargo", "~1.2", "1.2.9", "1.3.0"},
		{"cargo", "1.0.0-rc.2", "1.0.0-rc.3 1.0.0", "1.0.0-rc.1 2.0.0-alpha.1"},
		{"maven", "[17,21)", "17.0.1 20", "21 16.9"},
		{"maven", "(,1.0],[1.2,)", "0.9 1.0 1.2 5", "1.1"},
		{"maven", "[1.5]", "1.5", "1.5.1"},
		{"maven", "3.2.5", "3.2.5", "3.2.6"},
		{"nuget", "8.0.1", "8.0.1 9.0.0", "8.0.0"},
		{"nuget", "[8.0.1]", "8.0.1", "8.0.2"},
		{"nuget", "8.0.*", "8.0.7", "8.1.0"},
		{"nuget", "(1.0,2.0)", "1.5", "1.0 2.0"},
		{"tfm", "net8.0", "8.0.4", "9.0.0"},
		{"tfm", "net9.0-windows", "9.0.1", "8.0.1"},
		{"tfm", "netcoreapp3.1", "3.1.32", "5.0.0"},
		{"go", "1.22", "1.22.9", "1.23.0 1.21.9"},
		{"go", "go1.22.3", "1.22.3", "1.22.4"},
		{"java", "17", "17.0.9", "21.0.0"},
		{"java", "1.8", "8.0.302", "11.0.0"},
		{"java", "temurin-21.0.2+13", "21.0.2", "21.0.3"},
		{"java", "21.0.2-tem", "21.0.2", "17.0.1"},
		{"npm", "^1.2.3", "1.2.3 1.9.9", "2.0.0-alpha.1 2.0.0"},
		{"npm", "^5.0.0-beta.2", "5.0.0-beta.10 5.0.0 5.1.0", "5.0.0-beta.1 6.0.0-rc.1"},
		{"pep", "<2.0", "1.9.9 1.9.post1", "2.0 2.0rc1"},
		{"pep", "==1.0.*", "1.0 1.0a1 1.0.9", "1.1 1.1a1"},
		{"pep", ">1.0", "1.1", "1.0 1.0.post1"},
		{"pep", ">=1.0rc1", "1.0rc2 1.0", "1.0b9 1.0.dev3"},
		{"pep", "~=2.2.post3", "2.2.post3 2.9", "3.0 2.2"},
		{"pep", "!=1.5.*", "1.4 1.6", "1.5.2"},
		{"pep", "^1.2 || ^3.0", "1.5 3.1", "2.0"},
		{"least", "1.22", "1.22 9.0", "1.21.9"},
	} {
		s, ok := read[c.kind](c.text)
		if !ok {
			t.Errorf("%s %q is not understood", c.kind, c.text)
			continue
		}
		for _, x := range strings.Fields(c.in) {
			if !s.Has(parse(t, x)) {
				t.Errorf("%s %q (%s) does not hold %s", c.kind, c.text, s, x)
			}
		}
		for _, x := range strings.Fields(c.out) {
			if s.Has(parse(t, x)) {
				t.Errorf("%s %q (%s) holds %s", c.kind, c.text, s, x)
			}
		}
	}
	for kind, texts := range map[string][]string{
		"gem": {"latest", ">= ", "~>", "1.*"}, "composer": {"dev-main", "self.version"}, "cargo": {"latest", ">"}, "maven": {"${revision}", "[1,2", ""}, "nuget": {"latest", ""},
		"tfm": {"net48", "netstandard2.0", "net"}, "go": {"1", "latest", "1.x"}, "java": {"latest", "lts", "seventeen", "17x"}, "elixir": {"1.x", ""},
	} {
		for _, text := range texts {
			if s, ok := read[kind](text); ok && text != "" {
				t.Errorf("%s %q is taken for %s", kind, text, s)
			}
		}
	}
}

func TestOrderOfVersions(t *testing.T) {
	list := strings.Fields("0.9 1.0.dev1 1.0-alpha.1 1.0a2 1.0b1 1.0.0-milestone.1 1.0rc1 1.0.0-rc.2 1.0 1.0.post1 1.0.post2 1.0.1 1.2 1.10 2")
	for i := range list {
		for j := range list {
			a, b := parse(t, list[i]), parse(t, list[j])
			if c := a.Compare(b); (c < 0) != (i < j) || (c == 0) != (i == j) {
				t.Errorf("%s against %s gives %d", list[i], list[j], c)
			}
		}
	}
	for a, b := range map[string]string{"v1.2.3": "1.2.3", "1.2.3+build.5": "1.2.3", "5.3.1.Final": "5.3.1", "1.0c1": "1.0rc1", "1.0": "1.0.0"} {
		if parse(t, a).Compare(parse(t, b)) != 0 {
			t.Errorf("%s and %s are not the same", a, b)
		}
	}
}

// TestTermsAgainstComparing asks of random terms and versions, pre-releases
// among them, whether the set holds just what comparing one by one says.
func TestTermsAgainstComparing(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	num := func() string {
		s := fmt.Sprintf("%d.%d.%d", r.IntN(3), r.IntN(3), r.IntN(3))
		if r.IntN(4) == 0 {
			s += []string{"-alpha.1", "-beta.2", "-rc.1"}[r.IntN(3)]
		}
		return s
	}
	signs := map[string]func(c int) bool{">=": func(c int) bool { return c >= 0 }, ">": func(c int) bool { return c > 0 }, "<=": func(c int) bool { return c <= 0 }, "<": func(c int) bool { return c < 0 }, "=": func(c int) bool { return c == 0 }, "!=": func(c int) bool { return c != 0 }}
	names := []string{">=", ">", "<=", "<", "=", "!="}
	for range 4000 {
		a, b, x, y := names[r.IntN(6)], names[r.IntN(6)], num(), num()
		text := a + " " + x + ", " + b + " " + y
		s, ok := version.Gem(text)
		if !ok {
			t.Fatalf("%q is not understood", text)
		}
		var all []version.Version
		var newest version.Version
		found := false
		for range 12 {
			p := parse(t, num())
			all = append(all, p)
			want := signs[a](p.Compare(parse(t, x))) && signs[b](p.Compare(parse(t, y)))
			if s.Has(p) != want {
				t.Fatalf("%s in %q: %v", p, text, !want)
			}
			if want && (!found || p.Compare(newest) > 0) {
				newest, found = p, true
			}
		}
		if got, ok := s.Newest(all); ok != found || ok && got.Compare(newest) != 0 {
			t.Fatalf("the newest of %v in %q is %s, not %s", all, text, got, newest)
		}
		if old, ok := s.Oldest(all); ok && (!s.Has(old) || old.Compare(newest) > 0) {
			t.Fatalf("the oldest of %v in %q is %s", all, text, old)
		}
	}
}

func TestTags(t *testing.T) {
	for _, c := range []struct{ name, tag, set, distro, release string }{
		{"python", "3.12-slim-bookworm", "3.12.x", "debian", "12"},
		{"node", "22-alpine3.20", "22.x", "alpine", "3.20"},
		{"node", "lts-alpine", "alias lts", "alpine", ""},
		{"node", "latest", "alias latest", "", ""},
		{"node", "bookworm-slim", "none", "debian", "12"},
		{"debian", "buster-slim", "10.x", "debian", "10"},
		{"ubuntu", "22.04", "22.4.x", "ubuntu", "22.04"},
		{"alpine", "3.19", "3.19.x", "alpine", "3.19"},
		{"eclipse-temurin", "21.0.2_13-jre-jammy", "21.0.2", "ubuntu", "22.04"},
		{"elixir", "1.17.2-erlang-27.0-debian-bookworm-slim", "1.17.2", "debian", "12"},
		{"php", "8.3-fpm-alpine", "8.3.x", "alpine", ""},
		{"golang", "1.26-alpine3.22", "1.26.x", "alpine", "3.22"},
	} {
		im := version.Tag(c.name, c.tag)
		got := "none"
		if im.Known {
			got = im.Set.String()
		} else if im.Alias != "" {
			got = "alias " + im.Alias
		}
		if got != c.set || im.Distro != c.distro || im.Release != c.release {
			t.Errorf("%s:%s is %s on %q %q", c.name, c.tag, got, im.Distro, im.Release)
		}
	}
}

func TestSupport(t *testing.T) {
	for _, c := range []struct {
		product, text, today, line string
		want                       version.Standing
	}{
		{"node", "20", "2026-04-30", "20", version.Ending},
		{"node", "20", "2026-05-01", "20", version.Ended},
		{"node", "20", "2026-01-15", "20", version.Supported},
		{"node", ">=18 <23", "2026-11-26", "22", version.Supported},
		{"python", "3.8.10", "2026-11-26", "3.8", version.Ended},
		{"python", "3.14.0rc1", "2026-11-26", "3.14", version.Supported},
		{"php", "8.2", "2026-11-26", "8.2", version.Ending},
		{"dotnet", "8.0", "2026-11-26", "8.0", version.Ended},
		{"ruby", "3.3.4", "2026-11-26", "3.3", version.Supported},
		{"go", "1.24.2", "2026-11-26", "1.24", version.Ended},
		{"java", "17", "2026-11-26", "17", version.Supported},
		{"elixir", "1.14.5", "2026-11-26", "1.14", version.Ended},
		{"debian", "11", "2026-11-26", "11", version.Ended},
	} {
		s, ok := version.Prefix(c.text)
		if !ok {
			s, ok = version.NPM(c.text)
		}
		l, found := version.NewestLine(c.product, s, c.today)
		if !ok || !found || l.Name != c.line || l.Stands(c.today) != c.want {
			t.Errorf("%s %s on %s: line %q stands %d, wanted %q %d", c.product, c.text, c.today, l.Name, l.Stands(c.today), c.line, c.want)
		}
	}
	if _, ok := version.NewestLine("node", version.All, "2026-11-26"); ok {
		t.Error("a set without an upper end has a newest line")
	}
	for product, want := range map[string]string{"node": "26", "python": "3.14", "dotnet": "10.0", "java": "25", "php": "8.5", "go": "1.27"} {
		if l, ok := version.Advised(product, version.All, "2026-11-26"); !ok || product != "go" && l.Name != want {
			t.Errorf("of %s the line %q is advised, not %q", product, l.Name, want)
		}
	}
	for _, product := range strings.Fields("node python ruby java go php dotnet rust elixir erlang deno bun debian ubuntu alpine") {
		last := version.Line{}
		for _, l := range version.Lines(product) {
			if l.Ends != "" && l.Ends < l.Released || last.Name != "" && parse(t, l.Name).Compare(parse(t, last.Name)) <= 0 {
				t.Errorf("%s %s is out of order, or ends before it begins", product, l.Name)
			}
			last = l
		}
		if last.Name == "" {
			t.Errorf("nothing is known of %s", product)
		}
	}
}

func FuzzGrammars(f *testing.F) {
	f.Add(">= 1.2, ~> 3.4.5.pre1 | [1,2) or net8.0")
	f.Fuzz(func(t *testing.T, text string) {
		for _, read := range []func(string) (version.Set, bool){version.Gem, version.Elixir, version.Composer, version.Cargo, version.Maven, version.NuGet, version.TFM, version.Go, version.Java, version.AtLeast} {
			if s, ok := read(text); ok && (!s.Within(version.All) || !s.Intersect(s).Within(s)) {
				t.Fatalf("%q makes a set that is not one: %s", text, s)
			}
		}
		version.Tag("node", text)
	})
}
