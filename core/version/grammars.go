package version

import (
	"strconv"
	"strings"
)

// Parse reads one version as a lock file has it, in the form of any of the
// ecosystems: 1.2.3, v1.2.3, 1.2.3-beta.1, 1.2rc1, 1.2.post1, 1.0.0.pre.1,
// 1.2.3+build, 5.3.1.Final.
func Parse(s string) (Version, bool) {
	s = strings.TrimSpace(s)
	s = strings.TrimPrefix(strings.TrimPrefix(s, "v"), "V")
	if i := strings.IndexByte(s, '+'); i >= 0 {
		s = s[:i]
	}
	var v Version
	n, i := 0, 0
	for i < len(s) && n < 4 {
		start := i
		for i < len(s) && s[i] >= '0' && s[i] <= '9' {
			i++
		}
		if i == start || i-start > 9 {
			break
		}
		v.N[n], _ = strconv.Atoi(s[start:i])
		n++
		if i+1 < len(s) && s[i] == '.' && s[i+1] >= '0' && s[i+1] <= '9' {
			i++
			continue
		}
		break
	}
	if n == 0 {
		return v, false
	}
	rest := strings.ToLower(strings.TrimLeft(s[i:], ".-_ "))
	switch {
	case rest == "" || rest == "final" || rest == "ga" || rest == "release" || rest == "stable":
	case strings.HasPrefix(rest, "post") || len(rest) > 1 && rest[0] == 'p' && rest[1] >= '0' && rest[1] <= '9':
		v.Post, _ = strconv.Atoi(strings.TrimLeft(rest, "post.-_"))
	case s[i] == '.' && rest[0] >= '0' && rest[0] <= '9': // a fifth number
	default:
		v.Pre = phase(rest)
	}
	return v, true
}

// phases are the names of pre-releases that mean the same, by the name that
// puts them in order (PEP 440 "Pre-release spelling"; Composer "Stability").
var phases = []struct{ name, as string }{
	{"dev", "\x01dev"}, {"alpha", "alpha"}, {"beta", "beta"}, {"milestone", "milestone"}, {"preview", "preview"}, {"pre", "pre"}, {"rc", "rc"}, {"cr", "rc"}, {"snapshot", "snapshot"},
}

// phase gives a pre-release as dotted identifiers: rc1 becomes rc.1.
func phase(s string) string {
	letters := 0
	for letters < len(s) && s[letters] >= 'a' && s[letters] <= 'z' {
		letters++
	}
	name, rest := s[:letters], strings.TrimLeft(s[letters:], ".-_")
	switch name {
	case "a":
		name = "alpha"
	case "b":
		name = "beta"
	case "c":
		name = "rc"
	case "m":
		name = "milestone"
	}
	for _, p := range phases {
		if name == p.name {
			name = p.as
		}
	}
	rest = strings.NewReplacer("-", ".", "_", ".").Replace(rest)
	switch {
	case name == "":
		return rest
	case rest == "":
		return name
	}
	return name + "." + rest
}

func from(v Version) Set  { return Set{[]interval{{lo: v, noHi: true}}} }
func above(v Version) Set { return Set{[]interval{{lo: v, loOpen: true, noHi: true}}} }
func below(v Version) Set { return Set{[]interval{{lo: bottom, hi: v, hiOpen: true}}}.normal() }
func upTo(v Version) Set  { return Set{[]interval{{lo: bottom, hi: v}}} }
func just(v Version) Set  { return Set{[]interval{{lo: v, hi: v}}} }
func line(lo Version, n int) Set {
	return Set{[]interval{{lo: lo, hi: next(lo, n), hiOpen: true}}}.normal()
}
func but(v Version) Set { return below(v).Union(above(v)) }

// first is the first pre-release of a version that has none.
func first(v Version) Version {
	if v.Pre == "" && v.Post == 0 {
		v.Pre = least
	}
	return v
}

// number reads a version and counts its numbers; a star at the end is a wild
// card.
func number(s string) (v Version, n int, wild, ok bool) {
	s = strings.TrimSpace(s)
	for strings.HasSuffix(s, ".*") || strings.HasSuffix(s, ".x") || strings.HasSuffix(s, ".X") {
		s, wild = s[:len(s)-2], true
	}
	if s == "*" || s == "x" || s == "X" {
		return v, 0, true, true
	}
	if v, ok = Parse(s); !ok {
		return v, 0, wild, false
	}
	s = strings.TrimLeft(s, "vV")
	for n = 1; n < 4; n++ {
		i := strings.IndexByte(s, '.')
		if i < 0 || i+1 >= len(s) || s[i+1] < '0' || s[i+1] > '9' || strings.Trim(s[:i], "0123456789") != "" {
			break
		}
		s = s[i+1:]
	}
	// What follows the numbers must be a pre-release, a build or nothing.
	tail := strings.TrimLeft(s, "0123456789")
	if tail != "" && (v.Pre == "" && v.Post == 0 && tail[0] != '+' && tail[0] != '.' && tail[0] != '-' || strings.ContainsAny(tail, "<>=!,|*() ")) {
		return v, 0, wild, false
	}
	return v, n, wild, true
}

// signed cuts the comparing sign off the front of a term.
func signed(term string) (sign, rest string) {
	term = strings.TrimSpace(term)
	rest = strings.TrimLeft(term, "<>=!~^")
	return term[:len(term)-len(rest)], strings.TrimSpace(rest)
}

// PEP440 reads version specifiers (PEP 440, "Version specifiers") and the
// caret and tilde that Poetry adds ("Dependency specification").
func PEP440(s string) (Set, bool) {
	var out Set
	for alt := range strings.SplitSeq(s, "||") {
		set := All
		for part := range strings.SplitSeq(alt, ",") {
			if part = strings.TrimSpace(part); part == "" || part == "*" {
				continue
			}
			one, ok := pepOne(part)
			if !ok {
				return Set{}, false
			}
			set = set.Intersect(one)
		}
		out = out.Union(set)
	}
	return out, true
}

// pepPhase are the pre-releases that PEP 440 knows.
var pepPhase = map[string]bool{"alpha": true, "beta": true, "rc": true, "pre": true, "preview": true, "\x01dev": true}

func pepOne(part string) (Set, bool) {
	sign, rest := signed(part)
	v, n, wild, ok := number(rest)
	if !ok || n == 0 || v.Pre != "" && !pepPhase[strings.SplitN(v.Pre, ".", 2)[0]] {
		return Set{}, false
	}
	switch sign {
	case "==", "===", "":
		if wild {
			return Set{[]interval{{lo: first(v), hi: next(v, n), hiOpen: true}}}, true
		}
		if sign == "" && n < 3 {
			return line(v, n), true
		}
		return just(v), true
	case "!=":
		if wild {
			return below(first(v)).Union(from(next(v, n))), true
		}
		return but(v), true
	case ">=":
		return from(v), true
	case ">":
		if v.Post == 0 && v.Pre == "" { // leaves its post releases out
			v.Post = 1 << 30
		}
		return above(v), true
	case "<":
		return below(first(v)), true
	case "<=":
		return upTo(v), true
	case "~=":
		if n < 2 {
			return Set{}, false
		}
		return line(v, n-1), true
	case "^", "~":
		return npmOne(sign + rest)
	}
	return Set{}, false
}

// Gem reads requirements of RubyGems and Bundler ("Gem::Requirement"), comma
// between them; quotes are not part of it.
func Gem(s string) (Set, bool) {
	set := All
	for part := range strings.SplitSeq(s, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		sign, rest := signed(part)
		v, n, wild, ok := number(rest)
		if !ok || wild {
			return Set{}, false
		}
		one, ok := compared(sign, v)
		if sign == "~>" {
			one, ok = line(v, max(1, n-1)), true
		}
		if !ok {
			return Set{}, false
		}
		set = set.Intersect(one)
	}
	return set, true
}

// compared gives the versions that stand in a relation to one.
func compared(sign string, v Version) (Set, bool) {
	switch sign {
	case "", "=", "==":
		return just(v), true
	case "!=", "<>":
		return but(v), true
	case ">=":
		return from(v), true
	case ">":
		return above(v), true
	case "<":
		return below(v), true
	case "<=":
		return upTo(v), true
	}
	return Set{}, false
}

// Elixir reads requirements of Mix (documentation of Elixir's Version
// module, "Requirements").
func Elixir(s string) (Set, bool) {
	var out Set
	for alt := range strings.SplitSeq(s, " or ") {
		set := All
		for part := range strings.SplitSeq(alt, " and ") {
			sign, rest := signed(part)
			v, n, wild, ok := number(rest)
			if !ok || wild {
				return Set{}, false
			}
			one, ok := compared(sign, v)
			if sign == "~>" {
				one, ok = line(v, max(1, n-1)), true
			}
			if !ok {
				return Set{}, false
			}
			set = set.Intersect(one)
		}
		out = out.Union(set)
	}
	return out, true
}

// Composer reads constraints of Composer ("Versions and constraints").
// Branches (dev-main) are not versions and not understood.
func Composer(s string) (Set, bool) {
	var out Set
	for alt := range strings.SplitSeq(strings.ReplaceAll(s, "||", "|"), "|") {
		set := All
		alt = strings.TrimSpace(alt)
		if i := strings.IndexByte(alt, '@'); i > 0 {
			alt = alt[:i] // a stability flag
		}
		if lo, hi, ok := strings.Cut(alt, " - "); ok {
			a, _, _, ok1 := number(lo)
			b, n, _, ok2 := number(hi)
			if !ok1 || !ok2 {
				return Set{}, false
			}
			one := upTo(b)
			if n < 3 {
				one = below(next(b, n))
			}
			out = out.Union(from(a).Intersect(one))
			continue
		}
		words := strings.FieldsFunc(alt, func(r rune) bool { return r == ' ' || r == ',' })
		for k := 0; k < len(words); k++ {
			w := words[k]
			if strings.Trim(w, "<>=!~^") == "" && k+1 < len(words) {
				k++
				w += words[k]
			}
			sign, rest := signed(w)
			v, n, wild, ok := number(rest)
			if !ok {
				return Set{}, false
			}
			var one Set
			switch {
			case n == 0:
				one = All
			case wild:
				one = line(v, n)
				if sign == "!=" {
					one = below(v).Union(from(next(v, n)))
				}
			case sign == "^":
				one, ok = npmOne(w)
			case sign == "~":
				one = line(v, max(1, n-1))
			default:
				one, ok = compared(sign, v)
			}
			if !ok {
				return Set{}, false
			}
			set = set.Intersect(one)
		}
		out = out.Union(set)
	}
	return out, true
}

// Cargo reads version requirements of Cargo ("Specifying dependencies"): a
// bare version is a caret requirement.
func Cargo(s string) (Set, bool) {
	set := All
	for part := range strings.SplitSeq(s, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		sign, rest := signed(part)
		_, n, wild, ok := number(rest)
		if !ok {
			return Set{}, false
		}
		if sign == "" && !wild {
			sign = "^"
		}
		one := All
		if n > 0 {
			if one, ok = npmOne(sign + strings.TrimSuffix(rest, ".*")); !ok {
				return Set{}, false
			}
		}
		set = set.Intersect(one)
	}
	return set, true
}

// bracketed reads intervals such as [1.0,2.0) with commas or nothing between
// them. A bare version is given to soft.
func bracketed(s string, soft func(Version, int, bool) Set) (Set, bool) {
	s = strings.TrimSpace(s)
	if s == "" {
		return Set{}, false
	}
	if s[0] != '[' && s[0] != '(' {
		v, n, wild, ok := number(s)
		if !ok {
			return Set{}, false
		}
		return soft(v, n, wild), true
	}
	var out Set
	for s != "" {
		end := strings.IndexAny(s, ")]")
		if end < 0 || s[0] != '[' && s[0] != '(' {
			return Set{}, false
		}
		lo, hi, two := strings.Cut(s[1:end], ",")
		i := interval{lo: bottom, noHi: true}
		if lo = strings.TrimSpace(lo); lo != "" {
			v, _, _, ok := number(lo)
			if !ok {
				return Set{}, false
			}
			i.lo, i.loOpen = v, s[0] == '('
			if !two {
				i.hi, i.noHi = v, false
			}
		}
		if hi = strings.TrimSpace(hi); hi != "" {
			v, _, _, ok := number(hi)
			if !ok {
				return Set{}, false
			}
			i.hi, i.hiOpen, i.noHi = v, s[end] == ')', false
		}
		out = out.Union(Set{[]interval{i}}.normal())
		s = strings.TrimLeft(s[end+1:], ", ")
	}
	return out, true
}

// Maven reads version requirements of Maven ("Dependency version requirement
// specification"); a bare version is a preference and stands for itself.
func Maven(s string) (Set, bool) {
	return bracketed(s, func(v Version, _ int, _ bool) Set { return just(v) })
}

// NuGet reads version ranges of NuGet ("Package versioning"); a bare version
// is a lower bound, a star floats.
func NuGet(s string) (Set, bool) {
	return bracketed(s, func(v Version, n int, wild bool) Set {
		switch {
		case wild && n == 0:
			return All
		case wild:
			return line(v, n)
		}
		return from(v)
	})
}

// TFM reads a target framework moniker of .NET ("Target frameworks in
// SDK-style projects"). Monikers of the older .NET Framework and of .NET
// Standard name no runtime that is hosted and are not understood.
func TFM(s string) (Set, bool) {
	s, _, _ = strings.Cut(strings.ToLower(strings.TrimSpace(s)), "-")
	rest, ok := strings.CutPrefix(s, "netcoreapp")
	if !ok {
		if rest, ok = strings.CutPrefix(s, "net"); !ok || !strings.Contains(rest, ".") {
			return Set{}, false
		}
	}
	return Prefix(rest)
}

// Go reads the version of a go or toolchain line (Go modules reference, "go
// directive", "toolchain directive").
func Go(s string) (Set, bool) {
	s = strings.TrimPrefix(strings.TrimSpace(s), "go")
	s, _, _ = strings.Cut(s, "-")
	v, n, wild, ok := number(s)
	if !ok || wild || n < 2 {
		return Set{}, false
	}
	if v.Pre != "" || n == 3 {
		return just(v), true
	}
	return line(v, n), true
}

// AtLeast gives the versions from one on.
func AtLeast(s string) (Set, bool) {
	v, n, wild, ok := number(strings.TrimPrefix(strings.TrimSpace(s), "go"))
	if !ok || wild || n == 0 {
		return Set{}, false
	}
	return from(v), true
}

// Java reads a Java version with the names of its makers around it: 17, 1.8,
// temurin-21.0.2+13, 21.0.2-tem, openjdk-17.
func Java(s string) (Set, bool) {
	s = strings.ToLower(strings.TrimSpace(s))
	if i := strings.IndexAny(s, "0123456789"); i > 0 && (s[i-1] == '-' || strings.HasPrefix(s, "java")) {
		s = s[i:]
	}
	end := 0
	for end < len(s) && (s[end] >= '0' && s[end] <= '9' || s[end] == '.') {
		end++
	}
	rest := s[end:]
	if end == 0 || rest != "" && !strings.ContainsAny(rest[:1], "-+_u") {
		return Set{}, false
	}
	if strings.HasPrefix(s, "1.") && len(s) > 2 {
		return Prefix(strings.SplitN(s[:end], ".", 3)[1])
	}
	return Prefix(strings.TrimSuffix(s[:end], "."))
}

// Newest gives the newest of a list that the set holds.
func (s Set) Newest(list []Version) (Version, bool) { return s.pick(list, 1) }

// Oldest gives the oldest of a list that the set holds.
func (s Set) Oldest(list []Version) (Version, bool) { return s.pick(list, -1) }

func (s Set) pick(list []Version, sign int) (best Version, ok bool) {
	for _, v := range list {
		if s.Has(v) && (!ok || v.Compare(best)*sign > 0) {
			best, ok = v, true
		}
	}
	return best, ok
}

// End gives the upper end of a set, ok only where it has one.
func (s Set) End() (Version, bool) {
	if !s.Bounded() {
		return Version{}, false
	}
	return s.list[len(s.list)-1].hi, true
}

// Single reports whether the set holds just one version.
func (s Set) Single() bool {
	return len(s.list) == 1 && !s.list[0].noHi && s.list[0].lo == s.list[0].hi
}

// Below gives the versions before one.
func Below(v Version) Set { return below(v) }
