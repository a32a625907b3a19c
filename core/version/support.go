package version

import (
	_ "embed"
	"strings"
	"sync"
	"time"
)

//go:embed support.tsv
var supportTable string

// Line is a release line of a product and its window of support.
type Line struct {
	Name     string // 3.12
	Set      Set
	Released string // first day, YYYY-MM-DD
	Ends     string // last day of support, YYYY-MM-DD; empty where none is set
	Kind     string // what ends: security, LTS, updates, …
}

// Standing is how a line stands on a day.
type Standing int

// The standings.
const (
	Unlisted  Standing = iota // nothing is known of it
	Supported                 // for more than 90 days to come
	Ending                    // within 90 days
	Ended
)

// supportLines keeps the lines of each product that was asked for.
var supportLines sync.Map

// readLines reads the lines of one product out of the table.
func readLines(product string) []Line {
	var list []Line
	for row := range strings.SplitSeq(supportTable, "\n") {
		if !strings.HasPrefix(row, product) || len(row) <= len(product) || row[len(product)] != '\t' {
			continue
		}
		f := strings.Split(row, "\t")
		s, ok := Prefix(f[1])
		if len(f) != 5 || !ok {
			continue
		}
		l := Line{Name: f[1], Set: s, Released: f[2], Ends: f[3], Kind: f[4]}
		if l.Ends == "-" {
			l.Ends = ""
		}
		list = append(list, l)
	}
	return list
}

// Lines lists the release lines of a product, the oldest first: node, python,
// ruby, java, go, php, dotnet, rust, elixir, erlang, deno, bun, debian,
// ubuntu, alpine. The dates and their sources are in support.tsv.
func Lines(product string) []Line {
	if list, ok := supportLines.Load(product); ok {
		return list.([]Line)
	}
	list := readLines(product)
	supportLines.Store(product, list)
	return list
}

// Stands says how a line stands on a day (YYYY-MM-DD).
func (l Line) Stands(today string) Standing {
	switch {
	case l.Ends == "":
		return Supported
	case l.Ends < today:
		return Ended
	}
	if l.Kind == "rolling" {
		return Supported // its end is set by the table and no announcement
	}
	if t, err := time.Parse(time.DateOnly, today); err == nil && l.Ends < t.AddDate(0, 0, 90).Format(time.DateOnly) {
		return Ending
	}
	return Supported
}

// NewestLine gives the newest line of a product, out by a day, that a set allows;
// ok is false where the set has no upper end or no line is known in it.
func NewestLine(product string, s Set, today string) (Line, bool) {
	if !s.Bounded() {
		return Line{}, false
	}
	if s.Single() { // a pre-release belongs to its line
		v := s.list[0].lo
		v.Pre = ""
		s = just(v)
	}
	list := Lines(product)
	for i := len(list) - 1; i >= 0; i-- {
		if list[i].Released <= today && !list[i].Set.Intersect(s).Empty() {
			return list[i], true
		}
	}
	return Line{}, false
}

// Advised gives the line to take: the supported one whose support ends last
// among those out for half a year that a set allows.
func Advised(product string, s Set, today string) (Line, bool) {
	half := today
	if t, err := time.Parse(time.DateOnly, today); err == nil {
		half = t.AddDate(0, -6, 0).Format(time.DateOnly)
	}
	var best Line
	ok := false
	for _, l := range Lines(product) {
		if l.Released <= half && l.Stands(today) == Supported && !l.Set.Intersect(s).Empty() && (!ok || l.Ends == "" || best.Ends != "" && l.Ends >= best.Ends) {
			best, ok = l, true
		}
	}
	return best, ok
}
