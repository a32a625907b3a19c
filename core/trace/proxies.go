package trace

import (
	"net/url"
	"strings"

	"ubique/core/code"
)

// Objects of JavaScript that answer by a program of their own: proxies, prototypes
// that are given, and what an address asks for (ECMA-262, 15th edition, 10.5 "Proxy
// Object Internal Methods and Internal Slots", 28.1 "The Reflect Object"; WHATWG URL
// Standard, 6.2 "URLSearchParams class").

// mark is a symbol: those of Symbol.for are the same by their names, others each of
// their own.
type mark struct{ id string }

// iteratorMark is Symbol.iterator.
var iteratorMark = mark{"Symbol.iterator"}

// iterated is what an object gives by its own iterator.
func (m *machine) iterated(o *object, s *scope) (list1 []any, done bool, err error) {
	name := keyText(iteratorMark)
	f := m.method(o, name)
	if f == nil {
		if c := o.cells[name]; c != nil {
			f, _ = c.v.(*function)
		}
	}
	if f == nil {
		return nil, false, nil
	}
	at := spot{s.module.file, s.module.file.Body}
	v, err := m.call(f, o, nil, nil, at)
	if err != nil {
		return nil, true, err
	}
	if it, ok := v.(*object); ok && it.class == nil && it.cells["next"] != nil { // next() by next()
		for len(list1) < maxItems {
			r, err := m.call(it.cells["next"].v, it, nil, nil, at)
			if err != nil {
				return nil, true, err
			}
			step, ok := r.(*object)
			if !ok {
				return nil, true, giveUp("what an iterator gives")
			}
			end, _ := step.get("done")
			yes, known := truth(end, false)
			if !known {
				return nil, true, giveUp("what an iterator gives")
			}
			if yes {
				return list1, true, nil
			}
			x, _ := step.get("value")
			list1 = append(list1, x)
		}
		return nil, true, spent("a list that is too long")
	}
	list1, err = m.items(v, s)
	return list1, true, err
}

// proxied is a proxy.
type proxied struct {
	target  any
	handler *object
}

// trap is what the handler of a proxy does for an operation.
func (p *proxied) trap(name string) (*function, error) {
	v, ok := p.handler.get(name)
	if !ok || v == nil || v == any(undefined) {
		return nil, nil
	}
	f, ok := v.(*function)
	if !ok {
		return nil, giveUp("what a proxy does for %s", name)
	}
	return f, nil
}

func (m *machine) proxyGet(p *proxied, name string, s *scope, n *code.Node) (any, error) {
	at := spot{s.module.file, n}
	if err := m.step(); err != nil {
		return nil, err
	}
	f, err := p.trap("get")
	if err != nil {
		return nil, err
	}
	if f != nil {
		return m.call(f, p.handler, []any{p.target, name, p}, nil, at)
	}
	return m.key(p.target, name, s, n)
}

func (m *machine) proxySet(p *proxied, name string, v any, s *scope, n *code.Node) error {
	f, err := p.trap("set")
	if err != nil {
		return err
	}
	if f == nil {
		return m.setKey(p.target, name, v, s, n)
	}
	took, err := m.call(f, p.handler, []any{p.target, name, v, p}, nil, spot{s.module.file, n})
	if err != nil {
		return err
	}
	if yes, ok := truth(took, false); !ok {
		return undecided("whether a proxy takes a value")
	} else if !yes && strict(s) {
		return raise("TypeError", "'set' on proxy: trap returned falsish for property '"+name+"'")
	}
	return nil
}

// strict reports whether an assignment that is refused is an error: in modules and
// classes, and where the file says so.
func strict(s *scope) bool {
	f := s.module.file
	if strings.HasSuffix(f.Name, ".mjs") || f.Lang == code.TypeScript {
		return true
	}
	for _, k := range f.Body.Kids {
		if k.Is(code.Import) || k.Is(code.Export) || k.Flag&code.Exported != 0 {
			return true
		}
		if k.Is(code.ExprStmt) && k.Kid(0).Is(code.String) && k.Kids[0].Name == "use strict" {
			return true
		}
	}
	for x := s; x != nil; x = x.up {
		if x.fn != nil && x.fn.home != nil {
			return true
		}
	}
	return false
}

// proxyHas is `in`.
func (m *machine) proxyHas(p *proxied, what any, s *scope, n *code.Node) (any, error) {
	f, err := p.trap("has")
	if err != nil {
		return nil, err
	}
	if f != nil {
		v, err := m.call(f, p.handler, []any{p.target, what}, nil, spot{s.module.file, n})
		if err != nil {
			return nil, err
		}
		yes, ok := truth(v, false)
		if !ok {
			return dontKnow("whether a name is there"), nil
		}
		return yes, nil
	}
	if q, ok := p.target.(*proxied); ok {
		return m.proxyHas(q, what, s, n)
	}
	yes, ok := m.contains(p.target, what, false)
	if !ok {
		return dontKnow("whether a name is there"), nil
	}
	return yes, nil
}

// searchParams is what an address asks for, as an object of JavaScript.
func searchParams(query string) (*object, bool) {
	o := newObject()
	o.class = &class{name: "URLSearchParams", builtin: true}
	l := &list{}
	for part := range strings.SplitSeq(strings.TrimPrefix(query, "?"), "&") {
		if part == "" {
			continue
		}
		k, v, _ := strings.Cut(part, "=")
		name, err := url.QueryUnescape(k)
		if err != nil {
			return nil, false
		}
		text, err := url.QueryUnescape(v)
		if err != nil {
			return nil, false
		}
		l.items = append(l.items, &list{items: []any{name, text}})
	}
	o.set(askedFor, l)
	return o, true
}

// askedFor is the hidden key under which the names and values of URLSearchParams are.
const askedFor = "\x00asked"

// searchMethod calls a method of URLSearchParams; done is false for any other object.
func (m *machine) searchMethod(o *object, name string, args []any, at spot) (v any, done bool, err error) {
	c := o.cells[askedFor]
	if c == nil {
		return nil, false, nil
	}
	pairs := c.v.(*list)
	which := show(first(args))
	found := &list{}
	for _, p := range pairs.items {
		if p := p.(*list); p.items[0] == any(which) {
			found.items = append(found.items, p.items[1])
		}
	}
	switch name {
	case "get":
		if len(found.items) == 0 {
			return nil, true, nil
		}
		return found.items[0], true, nil
	case "has":
		return len(found.items) > 0, true, nil
	case "getAll":
		return found, true, nil
	case "keys", "values":
		l := &list{}
		for _, p := range pairs.items {
			l.items = append(l.items, p.(*list).items[map[string]int{"keys": 0, "values": 1}[name]])
		}
		return l, true, nil
	case "entries":
		return &list{items: pairs.items}, true, nil
	case "forEach":
		for _, p := range pairs.items {
			p := p.(*list)
			if _, err := m.call(first(args), undefined, []any{p.items[1], p.items[0], o}, nil, at); err != nil {
				return nil, true, err
			}
		}
		return undefined, true, nil
	case "set", "append", "delete":
		kept := &list{}
		for _, p := range pairs.items {
			if name == "append" || p.(*list).items[0] != any(which) {
				kept.items = append(kept.items, p)
			}
		}
		if name != "delete" {
			kept.items = append(kept.items, &list{items: []any{which, show(at2(args, 1))}})
		}
		c.v = kept
		return undefined, true, nil
	}
	return dontKnow("what is made of what an address asks for"), true, nil
}
