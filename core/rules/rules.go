// Package rules says what a rule, a finding and a pass are. The rules
// themselves are in one folder a family below it, one file a rule, with its
// explanation beside it; package catalog lists them all.
//
// A rule is a value. It sees facts and contracts of hosts, and reports
// findings; it reads no files and knows no other rule.
package rules

//go:generate go run ./internal/list

import (
	"crypto/sha256"
	"encoding/hex"
	"slices"
	"sort"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/host"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// Level says how bad a finding is.
type Level int

// The levels, from least to worst.
const (
	Advice  Level = iota + 1
	Risk          // it comes up and then hurts
	Blocker       // it will not come up, or cannot be reached
)

func (l Level) String() string {
	switch l {
	case Advice:
		return "advice"
	case Risk:
		return "risk"
	case Blocker:
		return "blocker"
	}
	return ""
}

// ParseLevel reads the name of a level.
func ParseLevel(s string) (Level, bool) {
	for _, l := range []Level{Advice, Risk, Blocker} {
		if l.String() == s {
			return l, true
		}
	}
	return 0, false
}

// Rule is one thing that can be wrong.
type Rule struct {
	ID    string // family/name
	Level Level  // the usual level; a host may change it
	Title string // one line, without a full stop
	Doc   string // the explanation, in Markdown
	Check func(*Pass)
	Tree  func(*TreePass) // for rules about the tree as a whole
}

// Family is the part of the ID before the slash.
func (r *Rule) Family() string { f, _, _ := strings.Cut(r.ID, "/"); return f }

// HostLevel is a host on which a finding counts, and how bad it is there.
type HostLevel struct {
	Host  string
	Level Level
}

// Finding is a rule broken at a place.
type Finding struct {
	Rule        string
	Level       Level // the worst of the hosts
	Likely      bool  // not certain
	Component   string
	Hosts       []HostLevel
	Message     string
	Where       place.Span
	Trail       []value.Step
	Remedy      string
	Fingerprint string
}

// On is a component on a host to which it can go: which start counts there
// and under which environment.
type On struct {
	Host  *host.Contract
	Start *fact.Start // nil where nothing says how to start
	// Code is Start or, where nothing says how to start, the start that is
	// assumed, so that the code can be judged all the same; it may be nil.
	Code *fact.Start
	Env  value.Environ
	// Ported is Env with the port that the host would give.
	Ported value.Environ
	Port   int // that port; 0 where the host gives none
}

// Pass is one rule looking at one component.
type Pass struct {
	Tree      *source.Tree
	Component *fact.Component
	On        []*On  // in the order of the hosts
	Today     string // the day on which support is judged, YYYY-MM-DD
	rule      *Rule
	found     *[]Finding
}

// Report adds a finding on a host. Findings that say the same at the same
// place on several hosts become one. A level of 0 is the rule's own.
func (p *Pass) Report(on *On, level Level, f Finding) {
	p.report([]*On{on}, level, f)
}

// ReportAll adds a finding on all hosts of the pass.
func (p *Pass) ReportAll(level Level, f Finding) { p.report(p.On, level, f) }

func (p *Pass) report(on []*On, level Level, f Finding) {
	if level == 0 {
		level = p.rule.Level
	}
	f.Rule = p.rule.ID
	f.Component = p.Component.ID
	for _, o := range on {
		f.Hosts = append(f.Hosts, HostLevel{o.Host.Name, level})
	}
	f.Level = level
	add(p.found, f)
}

func add(list *[]Finding, f Finding) {
	for i := range *list {
		g := &(*list)[i]
		if g.Rule != f.Rule || g.Where != f.Where || g.Message != f.Message || g.Component != f.Component {
			continue
		}
		for _, h := range f.Hosts {
			known := false
			for k := range g.Hosts {
				if g.Hosts[k].Host == h.Host {
					known = true
					g.Hosts[k].Level = max(g.Hosts[k].Level, h.Level)
				}
			}
			if !known {
				g.Hosts = append(g.Hosts, h)
			}
		}
		g.Level = max(g.Level, f.Level)
		for _, s := range f.Trail { // what only this host adds
			if !slices.Contains(g.Trail, s) {
				g.Trail = append(g.Trail[:len(g.Trail):len(g.Trail)], s)
			}
		}
		return
	}
	*list = append(*list, f)
}

// Run looks at a component with a list of rules.
func Run(list []*Rule, t *source.Tree, c *fact.Component, on []*On, today string) []Finding {
	var found []Finding
	for _, r := range list {
		if r.Check != nil {
			r.Check(&Pass{Tree: t, Component: c, On: on, Today: today, rule: r, found: &found})
		}
	}
	return found
}

// Broken is a file that could not be read, and the route of the hosts that
// read it; an empty route means all.
type Broken struct {
	Err   *document.Error
	Route string
}

// TreePass is one rule looking at the tree as a whole.
type TreePass struct {
	Tree       *source.Tree
	Components []*fact.Component
	On         map[string][]*On // by component
	Broken     []Broken
	NearMisses []fact.NearMiss
	Rooted     bool // the tree is a folder of a larger one that somebody named
	rule       *Rule
	found      *[]Finding
}

// Owner is the component whose folder holds a path, or the first.
func (p *TreePass) Owner(file string) *fact.Component {
	var best *fact.Component
	for _, c := range p.Components {
		if c.Dir == "" || file == c.Dir || strings.HasPrefix(file, c.Dir+"/") {
			if best == nil || len(c.Dir) > len(best.Dir) {
				best = c
			}
		}
	}
	if best == nil && len(p.Components) > 0 {
		best = p.Components[0]
	}
	return best
}

// Report adds a finding about a file, on the hosts of its component that
// receive the tree by a route; no route means every host.
func (p *TreePass) Report(level Level, route string, f Finding) {
	if level == 0 {
		level = p.rule.Level
	}
	f.Rule, f.Level = p.rule.ID, level
	f.Component = "."
	if c := p.Owner(f.Where.File); c != nil {
		f.Component = c.ID
		for _, o := range p.On[c.ID] {
			if route == "" || o.Host.Route == route {
				f.Hosts = append(f.Hosts, HostLevel{o.Host.Name, level})
			}
		}
		if len(f.Hosts) == 0 && route != "" {
			return
		}
	}
	add(p.found, f)
}

// RunTree looks at the tree with a list of rules.
func RunTree(list []*Rule, p TreePass) []Finding {
	var found []Finding
	for _, r := range list {
		if r.Tree != nil {
			q := p
			q.rule, q.found = r, &found
			r.Tree(&q)
		}
	}
	return found
}

// Families in the order of a developer's work (design §1).
var Families = []string{"runtime", "pin", "manifest", "ship", "start", "port", "env", "secret", "settings", "descriptor"}

func familyOrder(id string) int {
	f, _, _ := strings.Cut(id, "/")
	for i, n := range Families {
		if n == f {
			return i
		}
	}
	return len(Families)
}

// Sort puts findings in the order of the work: component, family, place, rule.
func Sort(list []Finding) {
	sort.SliceStable(list, func(i, j int) bool {
		a, b := &list[i], &list[j]
		if a.Component != b.Component {
			return a.Component < b.Component
		}
		if x, y := familyOrder(a.Rule), familyOrder(b.Rule); x != y {
			return x < y
		}
		if a.Where != b.Where {
			return a.Where.Before(b.Where)
		}
		if a.Rule != b.Rule {
			return a.Rule < b.Rule
		}
		return a.Message < b.Message
	})
}

// Mark gives each finding a fingerprint that stays when lines move: the rule,
// the component, the file and the text of the line.
func Mark(list []Finding, line func(place.Span) string) {
	seen := map[string]int{}
	for i := range list {
		f := &list[i]
		key := f.Rule + "\x00" + f.Component + "\x00" + f.Where.File + "\x00" + strings.TrimSpace(line(f.Where))
		seen[key]++
		sum := sha256.Sum256([]byte(key + strings.Repeat("\x01", seen[key])))
		f.Fingerprint = hex.EncodeToString(sum[:8])
	}
}

// Step makes a step of a trail.
func Step(at place.Span, note string) value.Step { return value.Step{At: at, Note: note} }
