package value

import (
	"maps"

	"ubique/core/code"
	"ubique/core/place"
)

// loops are the loops of a file and the functions that are called for each
// element of a list.
type loops struct {
	nodes []loopIn
	each  map[*code.Node]code.Site // by the function, the call
}

type loopIn struct {
	node, fn *code.Node
}

// eachOf are the methods that call a function for each element, by the order in
// which it gets them: the element, the index; the key, the value (ECMA-262
// 23.1.3.15, Ruby 3.4 "Array" and "Hash", java.lang.Iterable and Map of Java 25,
// kotlin.collections 2.2).
var eachOf = map[string]bool{"forEach": true, "each": true, "each_pair": true, "each_with_index": true, "onEach": true, "ForEach": true}

func (e *Eval) loopsOf(f *code.File) *loops {
	if l := e.looping[f]; l != nil {
		return l
	}
	l := &loops{each: map[*code.Node]code.Site{}}
	var in func(n, fn *code.Node)
	in = func(n, fn *code.Node) {
		n.Walk(func(k *code.Node) bool {
			if k.Is(code.Loop) && len(k.Kids) == 3 {
				l.nodes = append(l.nodes, loopIn{k, fn})
			}
			if k.Is(code.Func) && k != n {
				in(k, k)
				return false
			}
			return true
		})
	}
	if f.Body != nil {
		in(f.Body, nil)
	}
	for _, site := range f.Calls {
		args := site.Node.Args()
		if fn := site.Node.Kid(0); fn.Is(code.Member) && eachOf[fn.Name] && len(args) > 0 && args[len(args)-1].Is(code.Func) {
			l.each[args[len(args)-1]] = site
		}
	}
	e.looping[f] = l
	return l
}

// turnsAround gives a context for each turn of the loop around a place; ok is
// false where there is none, or where its turns are not known.
func (e *Eval) turnsAround(site code.Site, c *context) (list []*context, ok bool) {
	list, tests, ok := e.turnsWith(site, c)
	for _, t := range tests {
		ok = ok && t == nil
	}
	return list, ok
}

// turnsWith is turnsAround, with the condition of each turn, nil for always.
func (e *Eval) turnsWith(site code.Site, c *context) (list []*context, tests []*Value, ok bool) {
	l := e.loopsOf(site.Scope.File)
	var best *code.Node
	for _, k := range l.nodes {
		body := k.node.Kids[2]
		if k.fn == site.Scope.Func && body != nil && body.Off <= site.Node.Off && site.Node.End <= body.End && (best == nil || body.Off > best.Kids[2].Off) {
			best = k.node
		}
	}
	if best != nil {
		return e.roundsWith(best, site.Scope, contextOf(c, site.Scope))
	}
	call, each := l.each[site.Scope.Func]
	if !each || e.busy(call.Node) {
		return nil, nil, false
	}
	e.active[call.Node] = true
	defer delete(e.active, call.Node)
	outer := contextOf(c, call.Scope)
	over := e.expr(call.Node.Kids[0].Kid(0), call.Scope, outer)
	if args := e.commandLine(over); args != nil {
		over = args
	}
	pairs, ok := elementsOf(over, 0)
	if !ok {
		return nil, nil, false
	}
	params := 0
	if ps := site.Scope.Func.Kid(0); ps != nil {
		params = len(ps.Kids)
	}
	for _, p := range pairs {
		args := []*Value{p.value, p.key}
		switch lang := site.Scope.File.Lang; {
		case over.Kind == Object && javascript(lang): // has no such method
			return nil, nil, false
		case over.Kind == Object && params > 1:
			args = []*Value{p.key, p.value}
		case over.Kind == Object:
			args = []*Value{{Kind: List, At: over.At, Kids: []*Value{p.key, p.value}}}
		case lang == code.Ruby && params > 1 && p.value.Kind == List && len(p.value.Kids) > 0 && call.Node.Kids[0].Name == "each":
			args = p.value.Kids
		}
		tests = append(tests, p.test)
		list = append(list, &context{fn: site.Scope.Func, args: args, keys: map[string]*Value{"it": args[0]}, up: outer, this: thisOf(outer)})
	}
	return list, tests, true
}

// element is one of a list, by its index, or of a map; test is the condition
// under which it is there, nil for always.
type element struct{ key, value, test *Value }

// elements lists what a list or a map that is known holds.
func elements(v *Value) (list []element, ok bool) {
	list, ok = elementsOf(v, 0)
	for _, x := range list {
		ok = ok && x.test == nil
	}
	return list, ok
}

func elementsOf(v *Value, depth int) (list []element, ok bool) {
	if v.Kind == Cond && len(v.Kids) == 3 && depth < 12 {
		yes, ok1 := elementsOf(v.Kids[1], depth+1)
		no, ok2 := elementsOf(v.Kids[2], depth+1)
		if !ok1 || !ok2 || len(yes)+len(no) > maxTurns*4 {
			return nil, false
		}
		return either(v, yes, no), true
	}
	if depth > 0 && (v.Kind == Undef || v.Kind == Null) { // a list of Go that nothing was put into
		return nil, true
	}
	if v.Kind != List && v.Kind != Object || len(v.Kids) > maxTurns*2 {
		return nil, false
	}
	for i, k := range v.Kids {
		key := number(float64(i), k.At)
		if v.Kind == Object {
			if v.Keys[i] == "..." {
				return nil, false
			}
			key = text(v.Keys[i], k.At)
		}
		list = append(list, element{key: key, value: k})
	}
	return list, true
}

// either is the elements of two lists, in their order, each under the condition
// that chooses the list; those that stand in both stay one.
func either(v *Value, yes, no []element) (list []element) {
	when := v.Kids[0]
	not := op("!", v.Py, v.At, when)
	and := func(a, b *Value) *Value {
		if b == nil {
			return a
		}
		return op("&&", v.Py, v.At, a, b)
	}
	same := func(a, b element) bool {
		return a.value == b.value || a.value.Kind == b.value.Kind && a.value.At == b.value.At && a.value.At.File != ""
	}
	// shared[i][j] is how many elements yes[i:] and no[j:] have in common.
	shared := make([][]int, len(yes)+1)
	for i := range shared {
		shared[i] = make([]int, len(no)+1)
	}
	for i := len(yes) - 1; i >= 0; i-- {
		for j := len(no) - 1; j >= 0; j-- {
			if same(yes[i], no[j]) {
				shared[i][j] = shared[i+1][j+1] + 1
			} else {
				shared[i][j] = max(shared[i+1][j], shared[i][j+1])
			}
		}
	}
	for i, j := 0, 0; i < len(yes) || j < len(no); {
		switch {
		case i < len(yes) && j < len(no) && same(yes[i], no[j]):
			x := yes[i]
			if a, b := yes[i].test, no[j].test; a != b {
				sides := []*Value{when, a, b}
				for k, t := range sides {
					if t == nil {
						sides[k] = boolean(true, v.At)
					}
				}
				x.test = &Value{Kind: Cond, Py: v.Py, At: v.At, Kids: sides}
			}
			list = append(list, x)
			i, j = i+1, j+1
		case j == len(no) || i < len(yes) && shared[i+1][j] >= shared[i][j+1]:
			x := yes[i]
			x.test = and(when, x.test)
			list = append(list, x)
			i++
		default:
			x := no[j]
			x.test = and(not, x.test)
			list = append(list, x)
			j++
		}
	}
	return list
}

// commandLine is the command line of any language as a list; nil for all other
// values.
func (e *Eval) commandLine(v *Value) *Value {
	if v.Kind == External {
		switch v.Text {
		case "main.args":
			return &Value{Kind: List, At: v.At, Kids: e.Args}
		case "os.Args", "$argv":
			return &Value{Kind: List, At: v.At, Kids: append([]*Value{text(e.Main, v.At)}, e.Args...)}
		}
	}
	return e.argumentList(v, v.At)
}

// viewed is a map where a loop goes through a view of it: map.keySet(),
// dict.Keys.
func (e *Eval) viewed(n *code.Node, s *code.Scope, c *context) (over *Value, view string) {
	m := n
	if n.Is(code.Call) && len(n.Kids) == 1 {
		m = n.Kids[0]
	}
	if m.Is(code.Member) {
		switch m.Name {
		case "keySet", "keys", "Keys", "values", "Values", "entrySet", "entries":
			if v := e.expr(m.Kid(0), s, c); v.Kind == Object {
				return v, m.Name
			}
		}
	}
	return e.expr(n, s, c), ""
}

// rounds gives a context for each turn of a loop over a list or a map that is
// known; ok is false for any other.
func (e *Eval) rounds(n *code.Node, s *code.Scope, c *context) (list []*context, ok bool) {
	list, tests, ok := e.roundsWith(n, s, c)
	for _, t := range tests {
		ok = ok && t == nil
	}
	return list, ok
}

func (e *Eval) roundsWith(n *code.Node, s *code.Scope, c *context) (list []*context, tests []*Value, ok bool) {
	if len(n.Kids) != 3 || n.Name == "" && s.File.Lang != code.Python {
		return nil, nil, false
	}
	target := n.Kids[0]
	if target.Is(code.Bind) {
		target = target.Kid(0)
	}
	if !target.Is(code.Name) && !target.Is(code.Array) && !target.Is(code.Object) || e.busy(n) {
		return nil, nil, false
	}
	e.active[n] = true
	defer delete(e.active, n)
	over, view := e.viewed(n.Kids[1], s, c)
	if javascript(s.File.Lang) && over.Kind == Object && n.Name == "of" && over.Text != "Map" {
		return nil, nil, false
	}
	if args := e.commandLine(over); args != nil {
		over = args
	}
	pairs, ok := elementsOf(over, 0)
	if !ok {
		return nil, nil, false
	}
	pair := func(p element, at place.Span) *Value {
		return &Value{Kind: List, At: at, Kids: []*Value{p.key, p.value}}
	}
	for _, p := range pairs {
		inner := &context{fn: s.Func}
		if c != nil {
			*inner = *c
		}
		inner.loops = map[string]*Value{}
		if c != nil {
			maps.Copy(inner.loops, c.loops)
		}
		x := p.value
		switch l := s.File.Lang; {
		case view == "keySet" || view == "keys" || view == "Keys", n.Name == "in":
			x = p.key
		case view == "values" || view == "Values", n.Alias != "":
		case over.Kind == Object && l == code.Python:
			x = p.key
		case over.Kind == Object && (target.Is(code.Array) || javascript(l)):
			x = pair(p, over.At)
		case over.Kind == Object && l != code.Go && l != code.PHP:
			return nil, nil, false
		}
		if n.Alias != "" {
			inner.loops[n.Alias] = p.key
		}
		if target.Is(code.Name) {
			inner.loops[target.Name] = x
		}
		for _, k := range target.Kids { // for (const { port, host } of list)
			if to := k.Kid(0); target.Is(code.Object) && k.Is(code.Pair) && to.Is(code.Name) {
				inner.loops[to.Name] = e.key(x, k.Name, s, c, s.File.At(k))
			}
		}
		for i, k := range target.Kids {
			if v := x.Element(i); v != nil && k.Is(code.Name) && target.Is(code.Array) {
				inner.loops[k.Name] = v
			}
		}
		tests = append(tests, p.test)
		list = append(list, inner)
	}
	return list, tests, true
}

// Turn is one turn of a loop around a call; Test is the condition under which it
// is made, nil for always.
type Turn struct {
	Test *Value
	in   *context
}

// Turns gives the turns of the loop around a place, also where that is in a
// function that the loop makes and calls; none where there is no loop, or where
// it is not known what it goes through.
func (e *Eval) Turns(site code.Site) (list []Turn) {
	for s := site.Scope; s != nil; s = s.Parent {
		in, tests, ok := e.turnsWith(code.Site{Node: site.Node, Scope: s}, nil)
		for i, c := range in {
			list = append(list, Turn{tests[i], c})
		}
		if ok || s.Func == nil {
			break
		}
	}
	return list
}

// Within has all that f asks be answered for one turn of a loop.
func (e *Eval) Within(t Turn, f func()) {
	before := e.in
	e.in = t.in
	defer func() { e.in = before }()
	f()
}

// turnOf is the turn that is looked at, for what stands in its loop.
func (e *Eval) turnOf(s *code.Scope) *context {
	if e.in == nil {
		return nil
	}
	for x := s; x != nil; x = x.Parent {
		if x.Func == e.in.fn {
			return e.in
		}
	}
	return nil
}

// reaches reports whether a name that a scope uses is the one of a loop of a
// function, and not one that a function inside declares.
func reaches(s *code.Scope, fn *code.Node, name string) bool {
	for x := s; x != nil && x.Func != fn; x = x.Parent {
		if len(x.Names[name]) > 0 {
			return false
		}
	}
	return true
}

// pushing are the methods that add to a list, by language.
var pushing = map[code.Language]string{code.JavaScript: "push", code.TypeScript: "push", code.JSX: "push", code.Python: "append", code.Java: "add", code.Kotlin: "add"}

// pushed adds to a list what is put into it later: all that stands before the
// byte use in the function that asks.
func (e *Eval) pushed(x *code.Scope, name string, v *Value, from *code.Scope, use int32, c *context) *Value {
	f := x.File
	for _, site := range f.Calls {
		fn := site.Node.Kid(0)
		if !fn.Is(code.Member) || fn.Name != pushing[f.Lang] || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != name || declares(site.Scope, name) != x || use > 0 && site.Scope.Func == from.Func && site.Node.Off > use || e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		in := contextOf(c, site.Scope)
		more := &Value{Kind: List, At: f.At(site.Node)}
		more.Kids, _ = e.args(site.Node, site.Scope, in)
		w := joinedLists(v, more)
		for i := len(site.Guards) - 1; i >= 0; i-- {
			w = e.guarded(site.Guards[i], w, v, in)
		}
		delete(e.active, site.Node)
		v = w
	}
	return v
}

// joinedLists is a list with more at its end, also where conditions decide what
// it holds.
func joinedLists(a, b *Value) *Value {
	switch {
	case a.Kind == Null || a.Kind == Undef: // a list of Go that nothing was put into
		return b
	case a.Kind == List && len(a.Kids)+len(b.Kids) <= maxParts:
		o := *a
		o.Kids = append(a.Kids[:len(a.Kids):len(a.Kids)], b.Kids...)
		return &o
	case a.Kind == Cond && len(a.Kids) == 3 && a.choices(maxChoices) < maxChoices:
		o := *a
		o.Kids = []*Value{a.Kids[0], joinedLists(a.Kids[1], b), joinedLists(a.Kids[2], b)}
		return &o
	}
	return unknown(tooMany, b.At)
}
