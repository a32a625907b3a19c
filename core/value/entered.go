package value

import (
	"ubique/core/code"
	"ubique/core/place"
)

// Entry is a condition under which a function is come to. With Exit set the
// program ends where it does not hold.
type Entry struct {
	Test *Value
	Exit bool
}

// maxEntries is how many calls, one inside the other, are gone back.
const maxEntries = 8

// Entered gives the conditions under which the function of a scope is called:
// those around its calls, around the calls of what holds these, and so on. What
// cannot be followed gives none.
func (e *Eval) Entered(s *code.Scope) []Entry { return e.entered(s, 0) }

func (e *Eval) entered(s *code.Scope, depth int) (list []Entry) {
	for ; s != nil && s.Func == nil && s.Parent != nil; s = s.Parent {
	}
	if s == nil || s.Func == nil || depth > maxEntries {
		return nil
	}
	fn := s.Func
	key := [2]any{fn, "entered"}
	if e.busy(key) {
		return nil
	}
	e.active[key] = true
	defer delete(e.active, key)
	sites := e.callsOf(fn, s.File)
	if len(sites) == 0 { // handed to something, there where it is written
		up := s
		for up != nil && up.Func == fn {
			up = up.Parent
		}
		return e.entered(up, depth+1)
	}
	var either *Value
	for i, site := range sites {
		ways := e.ways(fn, site, depth)
		if len(sites) == 1 {
			return ways
		}
		all := allOf(ways, site.Scope.File.At(site.Node))
		if all == nil || i > 12 {
			return nil // one of the calls stands under no condition
		}
		if either == nil {
			either = all
		} else {
			either = op("||", true, all.At, either, all)
		}
	}
	return []Entry{{Test: either}}
}

// ways are the conditions of one call of a function.
func (e *Eval) ways(fn *code.Node, site code.Site, depth int) (list []Entry) {
	for _, g := range site.Guards {
		if e.isMain(g) {
			continue // it may be called as a command of a package too
		}
		list = append(list, Entry{e.Guard(g), g.Exit})
	}
	if site.Node.Is(code.Call) && !e.busy(site.Node) {
		e.active[site.Node] = true
		v := e.called(site.Node.Kid(0), site.Scope, nil)
		delete(e.active, site.Node)
		if v.Kind == Cond && v.choices(maxChoices) < maxChoices {
			if test := v.leadsWhen(fn, 0); test != nil {
				list = append(list, Entry{Test: test})
			}
		}
	}
	return append(list, e.entered(site.Scope, depth+1)...)
}

// isMain reports whether a condition asks whether the file is the one that is
// run.
func (e *Eval) isMain(g code.Guard) bool {
	found := false
	g.Test.Walk(func(n *code.Node) bool {
		found = found || n.Is(code.Binary) && e.mainTest(n, g.Scope) != nil || n.Is(code.Member) && n.Dotted() == "import.meta.main"
		return !found
	})
	return found
}

// leadsWhen is the condition under which a value is a function; nil where it
// always is.
func (v *Value) leadsWhen(fn *code.Node, depth int) *Value {
	if v.Kind != Cond || len(v.Kids) != 3 || depth > 24 {
		if v.leads(fn, 0) {
			return nil
		}
		return boolean(false, v.At)
	}
	yes, no := v.Kids[1].leadsWhen(fn, depth+1), v.Kids[2].leadsWhen(fn, depth+1)
	if yes == nil && no == nil {
		return nil
	}
	if yes == nil {
		yes = boolean(true, v.At)
	}
	if no == nil {
		no = boolean(true, v.At)
	}
	return &Value{Kind: Cond, Py: v.Py, At: v.At, Kids: []*Value{v.Kids[0], yes, no}}
}

// allOf joins conditions; nil where there is none.
func allOf(list []Entry, at place.Span) *Value {
	var all *Value
	for _, w := range list {
		if all == nil {
			all = w.Test
		} else {
			all = op("&&", true, at, all, w.Test)
		}
	}
	return all
}
