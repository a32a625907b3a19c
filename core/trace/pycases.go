package trace

import (
	"strings"

	"ubique/core/code"
)

// Cases of Python with patterns (Python 3.14 language reference, 8.6.4 "Patterns").

// pyCase says whether a case takes a value: its pattern, and then its condition. The
// names of the pattern are set on the way.
func (m *machine) pyCase(t *code.Node, v any, s *scope) (bool, error) {
	if t.Name != code.Matched {
		return false, giveUp("a case that is not followed")
	}
	yes, err := m.pyMatches(t.Kid(0), v, s)
	if err != nil || !yes || t.Kid(1) == nil {
		return yes, err
	}
	return m.holds(t.Kids[1], s)
}

// wholes are the types whose pattern with one part takes the value itself.
var wholes = map[string]bool{"bool": true, "bytes": true, "dict": true, "float": true, "int": true, "list": true, "set": true, "str": true, "tuple": true}

func (m *machine) pyMatches(p *code.Node, v any, s *scope) (bool, error) {
	if err := m.step(); err != nil {
		return false, err
	}
	if p.Is(code.Name) {
		if p.Name != "_" {
			m.assignName(p.Name, v, s, "")
		}
		return true, nil
	}
	if p.Is(code.Binary) {
		yes, err := m.pyMatches(p.Kid(0), v, s)
		if err != nil {
			return false, err
		}
		if p.Name == "as" {
			if !yes {
				return false, nil
			}
			return m.pyMatches(p.Kid(1), v, s)
		}
		if yes {
			return true, nil
		}
		return m.pyMatches(p.Kid(1), v, s)
	}
	if !known(v) {
		return false, undecided("a case of what is not known")
	}
	switch p.Kind {
	case code.Array:
		l, ok := v.(*list)
		if !ok || l.set || l.gen {
			if o, isObject := v.(*object); isObject && o.class != nil && !o.dict {
				if !o.class.data {
					return false, giveUp("a case of an object")
				}
				if len(o.class.tupled) == 0 { // a data class is no sequence
					return false, nil
				}
				items, err := m.items(o, s)
				if err != nil {
					return false, err
				}
				return m.pyParts(p.Kids, items, s)
			}
			return false, nil
		}
		return m.pyParts(p.Kids, l.items, s)
	case code.Object:
		return m.pyMapping(p, v, s)
	case code.Call:
		return m.pyInstance(p, v, s)
	case code.Null:
		return v == nil, nil
	case code.True, code.False:
		return v == any(p.Is(code.True)), nil
	}
	w, err := m.eval(p, s)
	if err != nil {
		return false, err
	}
	same, err := m.operate("==", v, w, s, p)
	if err != nil {
		return false, err
	}
	yes, ok := same.(bool)
	if !ok {
		return false, undecided("a case that is not known")
	}
	return yes, nil
}

// pyParts matches a sequence part by part; one part may stand for all the rest.
func (m *machine) pyParts(parts []*code.Node, items []any, s *scope) (bool, error) {
	star := -1
	for i, k := range parts {
		if k.Is(code.Spread) {
			star = i
		}
	}
	if star < 0 && len(items) != len(parts) || star >= 0 && len(items) < len(parts)-1 {
		return false, nil
	}
	at := 0
	for i, k := range parts {
		if i == star {
			rest := len(items) - (len(parts) - 1)
			l := &list{items: append([]any(nil), items[at:at+rest]...)}
			if _, err := m.pyMatches(k.Kid(0), l, s); err != nil {
				return false, err
			}
			at += rest
			continue
		}
		if yes, err := m.pyMatches(k, items[at], s); !yes {
			return false, err
		}
		at++
	}
	return true, nil
}

func (m *machine) pyMapping(p *code.Node, v any, s *scope) (bool, error) {
	if _, ok := v.(*envMap); ok {
		v = m.envObject(true)
	}
	o, ok := v.(*object)
	if !ok || o.class != nil && !o.dict {
		if ok && !o.class.data {
			return false, giveUp("a case of an object")
		}
		return false, nil
	}
	taken := map[string]bool{}
	for _, k := range p.Kids {
		if k.Is(code.Spread) {
			rest := newObject()
			rest.dict = true
			for _, name := range o.keys {
				if !taken[name] && !strings.HasPrefix(name, "\x00") {
					rest.set(name, o.cells[name].v)
				}
			}
			if _, err := m.pyMatches(k.Kid(0), rest, s); err != nil {
				return false, err
			}
			continue
		}
		name := k.Name
		if k.Kid(1) != nil {
			x, err := m.eval(k.Kid(1), s)
			if err != nil {
				return false, err
			}
			if !known(x) {
				return false, undecided("a key that is not known")
			}
			name = keyText(x)
		}
		c := o.cells[name]
		if c == nil {
			return false, nil
		}
		taken[name] = true
		if yes, err := m.pyMatches(k.Kid(0), c.v, s); !yes {
			return false, err
		}
	}
	return true, nil
}

func (m *machine) pyInstance(p *code.Node, v any, s *scope) (bool, error) {
	of, err := m.eval(p.Kid(0), s)
	if err != nil {
		return false, err
	}
	is, ok := m.isInstance(v, of).(bool)
	if !ok {
		return false, undecided("a case of a class that is not known")
	}
	if !is {
		return false, nil
	}
	var names []any
	if c, ok := of.(*class); ok {
		if x, ok := classKey(c, "__match_args__", true); ok {
			if names, err = m.items(x, s); err != nil {
				return false, err
			}
		} else if c.data {
			for _, name := range fieldsOf(c) {
				names = append(names, name)
			}
		}
	}
	for i, k := range p.Kids[1:] {
		part, name := k, any(k.Name)
		switch {
		case k.Is(code.Keyword):
			part = k.Kid(0)
		case len(names) > i:
			name = names[i]
		default:
			o, ok := of.(*opaque)
			if !ok || i > 0 || !wholes[o.path] {
				return false, giveUp("a case that is not followed")
			}
			if yes, err := m.pyMatches(k, v, s); !yes {
				return false, err
			}
			continue
		}
		x, err := m.key(v, show(name), s, p)
		if t, ok := err.(*thrown); ok && strings.Contains(t.String(), "AttributeError") {
			return false, nil
		}
		if err != nil {
			return false, err
		}
		if yes, err := m.pyMatches(part, x, s); !yes {
			return false, err
		}
	}
	return true, nil
}
