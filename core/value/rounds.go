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
	l := e.loopsOf(site.Scope.File)
	var best *code.Node
	for _, k := range l.nodes {
		body := k.node.Kids[2]
		if k.fn == site.Scope.Func && body != nil && body.Off <= site.Node.Off && site.Node.End <= body.End && (best == nil || body.Off > best.Kids[2].Off) {
			best = k.node
		}
	}
	if best != nil {
		return e.rounds(best, site.Scope, contextOf(c, site.Scope))
	}
	call, each := l.each[site.Scope.Func]
	if !each || e.busy(call.Node) {
		return nil, false
	}
	e.active[call.Node] = true
	defer delete(e.active, call.Node)
	outer := contextOf(c, call.Scope)
	over := e.expr(call.Node.Kids[0].Kid(0), call.Scope, outer)
	if args := e.commandLine(over); args != nil {
		over = args
	}
	pairs, ok := elements(over)
	if !ok {
		return nil, false
	}
	params := 0
	if ps := site.Scope.Func.Kid(0); ps != nil {
		params = len(ps.Kids)
	}
	for _, p := range pairs {
		args := []*Value{p.value, p.key}
		switch lang := site.Scope.File.Lang; {
		case over.Kind == Object && javascript(lang): // has no such method
			return nil, false
		case over.Kind == Object && params > 1:
			args = []*Value{p.key, p.value}
		case over.Kind == Object:
			args = []*Value{{Kind: List, At: over.At, Kids: []*Value{p.key, p.value}}}
		case lang == code.Ruby && params > 1 && p.value.Kind == List && call.Node.Kids[0].Name == "each":
			args = p.value.Kids
		}
		list = append(list, &context{fn: site.Scope.Func, args: args, keys: map[string]*Value{"it": args[0]}, up: outer, this: thisOf(outer)})
	}
	return list, true
}

// element is one of a list, by its index, or of a map.
type element struct{ key, value *Value }

// elements lists what a list or a map that is known holds.
func elements(v *Value) (list []element, ok bool) {
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
		list = append(list, element{key, k})
	}
	return list, true
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
	if len(n.Kids) != 3 || n.Name == "" && s.File.Lang != code.Python {
		return nil, false
	}
	target := n.Kids[0]
	if target.Is(code.Bind) {
		target = target.Kid(0)
	}
	if !target.Is(code.Name) && !target.Is(code.Array) || e.busy(n) {
		return nil, false
	}
	e.active[n] = true
	defer delete(e.active, n)
	over, view := e.viewed(n.Kids[1], s, c)
	if javascript(s.File.Lang) && over.Kind == Object && n.Name == "of" && over.Text != "Map" {
		return nil, false
	}
	if args := e.commandLine(over); args != nil {
		over = args
	}
	pairs, ok := elements(over)
	if !ok {
		return nil, false
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
			return nil, false
		}
		if n.Alias != "" {
			inner.loops[n.Alias] = p.key
		}
		if target.Is(code.Name) {
			inner.loops[target.Name] = x
		}
		for i, k := range target.Kids {
			if v := x.Element(i); v != nil && k.Is(code.Name) && target.Is(code.Array) {
				inner.loops[k.Name] = v
			}
		}
		list = append(list, inner)
	}
	return list, true
}
