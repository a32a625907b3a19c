// Package version reads versions and ranges as each ecosystem writes them and
// computes with them as sets of intervals: what two ranges have in common,
// whether one lies in the other, whether anything is left.
//
// Grammars: npm ranges (node-semver 7, "Ranges"), PEP 440 version specifiers,
// RubyGems, Maven, Composer, Cargo, NuGet, Elixir, bare version prefixes as
// version files and container tags have them; each says its source.
package version

import (
	"strconv"
	"strings"
)

// Version is a release of up to four numbers; Pre is a pre-release tag, Post
// the number of a release after the release (PEP 440's post releases).
type Version struct {
	N    [4]int
	Pre  string
	Post int
}

// least stands before every pre-release of a version: an upper end that is
// open there leaves the pre-releases of the next line out too.
const least = "\x00"

// Compare orders versions; a pre-release stands before its release.
func (v Version) Compare(w Version) int {
	for i := range v.N {
		if v.N[i] != w.N[i] {
			if v.N[i] < w.N[i] {
				return -1
			}
			return 1
		}
	}
	switch {
	case v.Pre == w.Pre:
		return v.Post - w.Post
	case v.Pre == least:
		return -1
	case w.Pre == least:
		return 1
	case v.Pre == "":
		return 1
	case w.Pre == "":
		return -1
	}
	return comparePre(v.Pre, w.Pre)
}

// comparePre compares dotted identifiers: numbers by size, before text.
func comparePre(a, b string) int {
	as, bs := strings.Split(a, "."), strings.Split(b, ".")
	for i := 0; i < len(as) && i < len(bs); i++ {
		x, errX := strconv.Atoi(as[i])
		y, errY := strconv.Atoi(bs[i])
		switch {
		case errX == nil && errY == nil && x != y:
			if x < y {
				return -1
			}
			return 1
		case errX == nil && errY != nil:
			return -1
		case errX != nil && errY == nil:
			return 1
		case as[i] != bs[i]:
			return strings.Compare(as[i], bs[i])
		}
	}
	return len(as) - len(bs)
}

// String shows three numbers, four where the fourth counts.
func (v Version) String() string { return v.show(3) }

// short leaves zeros at the end out, as people write the ends of a range.
func (v Version) short() string { return v.show(1) }

func (v Version) show(few int) string {
	n := few
	for i, x := range v.N {
		if x != 0 {
			n = max(n, i+1)
		}
	}
	pre := v.Pre != "" && v.Pre != least
	if pre {
		n = max(n, 3)
	}
	s := strconv.Itoa(v.N[0])
	for _, x := range v.N[1:n] {
		s += "." + strconv.Itoa(x)
	}
	if pre {
		s += "-" + v.Pre
	}
	if v.Post > 0 {
		s += ".post" + strconv.Itoa(v.Post)
	}
	return s
}

// interval holds the versions from lo to hi; an open end is not in it.
type interval struct {
	lo, hi         Version
	loOpen, hiOpen bool
	noHi           bool
}

func (i interval) empty() bool {
	if i.noHi {
		return false
	}
	c := i.lo.Compare(i.hi)
	return c > 0 || c == 0 && (i.loOpen || i.hiOpen)
}

// line says how many numbers all versions of the interval begin with, where
// it is just all that begin with them: 2 for 3.12.x; else 0.
func (i interval) line() int {
	if i.noHi || i.loOpen || !i.hiOpen || i.lo.Pre != "" || i.lo.Post != 0 {
		return 0
	}
	for n := 1; n <= 3; n++ {
		whole := true
		for _, x := range i.lo.N[n:] {
			whole = whole && x == 0
		}
		if whole && i.hi == next(i.lo, n) {
			return n
		}
	}
	return 0
}

// Set is a set of versions: intervals in order, none touching another.
type Set struct{ list []interval }

// All holds every version.
var All = Set{[]interval{{lo: bottom, noHi: true}}}

// bottom stands below every version, pre-releases of 0.0.0 among them.
var bottom = Version{N: [4]int{-1}}

// Empty reports whether no version is in the set.
func (s Set) Empty() bool { return len(s.list) == 0 }

// Has reports whether the version is in the set.
func (s Set) Has(v Version) bool {
	return !s.Intersect(Set{[]interval{{lo: v, hi: v}}}).Empty()
}

// Intersect gives what both sets hold.
func (s Set) Intersect(t Set) Set {
	var out Set
	for _, a := range s.list {
		for _, b := range t.list {
			i := a
			if c := b.lo.Compare(i.lo); c > 0 || c == 0 && b.loOpen {
				i.lo, i.loOpen = b.lo, b.loOpen
			}
			if !b.noHi {
				if c := b.hi.Compare(i.hi); i.noHi || c < 0 || c == 0 && b.hiOpen {
					i.hi, i.hiOpen, i.noHi = b.hi, b.hiOpen, false
				}
			}
			if !i.empty() {
				out.list = append(out.list, i)
			}
		}
	}
	return out.normal()
}

// Union gives what either set holds.
func (s Set) Union(t Set) Set {
	return Set{append(append([]interval(nil), s.list...), t.list...)}.normal()
}

// Within reports whether every version of s is in t.
func (s Set) Within(t Set) bool { return s.Intersect(t).equal(s.normal()) }

func (s Set) equal(t Set) bool {
	if len(s.list) != len(t.list) {
		return false
	}
	for i := range s.list {
		if s.list[i] != t.list[i] {
			return false
		}
	}
	return true
}

// normal sorts the intervals and joins those that touch.
func (s Set) normal() Set {
	var list []interval
	for _, i := range s.list {
		if i.empty() {
			continue
		}
		if i.noHi {
			i.hi, i.hiOpen = Version{}, false
		}
		at := len(list)
		for at > 0 {
			c := i.lo.Compare(list[at-1].lo)
			if c > 0 || c == 0 && (i.loOpen || !list[at-1].loOpen) {
				break // of two that begin alike, the one that holds its end comes first
			}
			at--
		}
		list = append(list[:at], append([]interval{i}, list[at:]...)...)
	}
	var out []interval
	for _, i := range list {
		if n := len(out); n > 0 {
			p := &out[n-1]
			c := 1
			if !p.noHi {
				c = p.hi.Compare(i.lo)
			}
			if c > 0 || c == 0 && !(p.hiOpen && i.loOpen) {
				if !p.noHi && (i.noHi || p.hi.Compare(i.hi) < 0 || p.hi.Compare(i.hi) == 0 && p.hiOpen) {
					p.hi, p.hiOpen, p.noHi = i.hi, i.hiOpen, i.noHi
				}
				continue
			}
		}
		out = append(out, i)
	}
	return Set{out}
}

// Bounded reports whether the set has an upper end.
func (s Set) Bounded() bool {
	for _, i := range s.list {
		if i.noHi {
			return false
		}
	}
	return len(s.list) > 0
}

// String shows the set in the sign language that most readers know.
func (s Set) String() string {
	if s.Empty() {
		return "no version"
	}
	parts := make([]string, len(s.list))
	for n, i := range s.list {
		lo, hi := ">=", "<="
		if i.loOpen {
			lo = ">"
		}
		if i.hiOpen {
			hi = "<"
		}
		zero := i.lo == bottom
		switch {
		case i.noHi && zero:
			parts[n] = "any version"
		case i.noHi:
			parts[n] = lo + i.lo.short()
		case i.lo == i.hi:
			parts[n] = i.lo.String()
		case i.line() == 3:
			parts[n] = i.lo.String()
		case i.line() > 0:
			parts[n] = i.lo.show(i.line()) + ".x"
		case zero:
			parts[n] = hi + i.hi.short()
		default:
			parts[n] = lo + i.lo.short() + " " + hi + i.hi.short()
		}
	}
	return strings.Join(parts, " or ")
}

// partial reads up to four numbers; n says how many there were. A part that
// is x, X or * ends the numbers.
func partial(s string) (v Version, n int, ok bool) {
	s = strings.TrimPrefix(strings.TrimPrefix(strings.TrimSpace(s), "v"), "=")
	if i := strings.IndexByte(s, '+'); i >= 0 {
		s = s[:i]
	}
	num, pre, _ := strings.Cut(s, "-")
	v.Pre = pre
	wild := false
	for p := range strings.SplitSeq(num, ".") {
		if p == "x" || p == "X" || p == "*" {
			wild = true
			continue
		}
		if wild { // 1.x.2
			return v, n, false
		}
		digits := 0
		for digits < len(p) && p[digits] >= '0' && p[digits] <= '9' {
			digits++
		}
		if digits == 0 || n >= 4 || digits > 9 {
			return v, n, false
		}
		v.N[n], _ = strconv.Atoi(p[:digits])
		n++
		if digits < len(p) { // 3.14.0rc1
			v.Pre = p[digits:]
			if !strings.ContainsAny(v.Pre[:1], "abcr") {
				return v, n, false
			}
		}
	}
	return v, n, n > 0 || wild
}

// next is the first version after all that begin with the first n numbers.
func next(v Version, n int) Version {
	w := Version{Pre: least}
	copy(w.N[:n], v.N[:n])
	w.N[n-1]++
	return w
}

// Prefix holds every version that begins with the numbers of s, as version
// files and container tags are understood.
func Prefix(s string) (Set, bool) {
	v, n, ok := partial(s)
	if !ok {
		return Set{}, false
	}
	if n == 0 {
		return All, true
	}
	if v.Pre != "" {
		return Set{[]interval{{lo: v, hi: v}}}, true
	}
	return Set{[]interval{{lo: v, hi: next(v, n), hiOpen: true}}}, true
}

// NPM reads a range as node-semver does.
func NPM(s string) (Set, bool) {
	var out Set
	for part := range strings.SplitSeq(s, "||") {
		set := All
		part = strings.TrimSpace(part)
		if lo, hi, ok := strings.Cut(part, " - "); ok {
			a, _, ok1 := partial(lo)
			b, n, ok2 := partial(hi)
			if !ok1 || !ok2 {
				return Set{}, false
			}
			i := interval{lo: a, hi: b}
			if n < 3 && n > 0 {
				i.hi, i.hiOpen = next(b, n), true
			}
			out = out.Union(Set{[]interval{i}})
			continue
		}
		fields := strings.Fields(part)
		for k := 0; k < len(fields); k++ {
			f := fields[k]
			if strings.Trim(f, "<>=~^") == "" && k+1 < len(fields) {
				k++
				f += fields[k]
			}
			one, ok := npmOne(f)
			if !ok {
				return Set{}, false
			}
			set = set.Intersect(one)
		}
		out = out.Union(set)
	}
	return out, true
}

func npmOne(f string) (Set, bool) {
	rest := strings.TrimLeft(f, "<>=~^")
	sign := f[:len(f)-len(rest)]
	v, n, ok := partial(rest)
	if !ok {
		return Set{}, false
	}
	if n == 0 {
		if sign == "<" || sign == ">" {
			return Set{}, true
		}
		return All, true
	}
	switch sign {
	case ">=":
		return Set{[]interval{{lo: v, noHi: true}}}, true
	case ">":
		if n < 3 {
			return Set{[]interval{{lo: next(v, n), noHi: true}}}, true
		}
		return Set{[]interval{{lo: v, loOpen: true, noHi: true}}}, true
	case "<":
		return Set{[]interval{{lo: bottom, hi: v, hiOpen: true}}}.normal(), true
	case "<=":
		if n < 3 {
			return Set{[]interval{{lo: bottom, hi: next(v, n), hiOpen: true}}}, true
		}
		return Set{[]interval{{lo: bottom, hi: v}}}, true
	case "~", "~>":
		return Set{[]interval{{lo: v, hi: next(v, min(n, 2)), hiOpen: true}}}, true
	case "^":
		at := 1
		for at < n && v.N[at-1] == 0 {
			at++
		}
		return Set{[]interval{{lo: v, hi: next(v, at), hiOpen: true}}}, true
	case "", "=":
		if n >= 3 {
			return Set{[]interval{{lo: v, hi: v}}}, true
		}
		return Set{[]interval{{lo: v, hi: next(v, n), hiOpen: true}}}, true
	}
	return Set{}, false
}
