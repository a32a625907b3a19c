package trace

import (
	"slices"

	"ubique/core/code"
)

// rbFits reports whether a value fits a pattern, and binds the names in it; ok is false
// where that cannot be told (Ruby 3.4, "Pattern matching").
func (m *machine) rbFits(p *code.Node, v any, s *scope) (fits, ok bool, err error) {
	if p == nil {
		return false, false, nil
	}
	at := spot{s.module.file, p}
	switch {
	case p.Is(code.Name) && p.Name != "" && (p.Name[0] >= 'a' && p.Name[0] <= 'z' || p.Name[0] == '_') && p.Name != "self":
		m.rbSet(p.Name, v, s)
		return true, true, nil
	case p.Is(code.Bind):
		fits, ok, err = m.rbFits(p.Kid(1), v, s)
		if err == nil && fits && ok {
			m.rbSet(p.Kid(0).Name, v, s)
		}
		return fits, ok, err
	case p.Is(code.Binary) && p.Name == "|":
		for _, k := range p.Kids {
			if fits, ok, err = m.rbFits(k, v, s); err != nil || !ok || fits {
				return fits, ok, err
			}
		}
		return false, true, nil
	case p.Is(code.Array):
		return m.rbFitsList(p, v, s)
	case p.Is(code.Object):
		return m.rbFitsKeys(p, v, s)
	case p.Is(code.Call):
		of, err := m.eval(p.Kid(0), s)
		if err != nil {
			return false, false, err
		}
		if fits, ok, err = m.rbCase(of, v, s, at); err != nil || !ok || !fits {
			return fits, ok, err
		}
		return m.rbFits(p.Kid(1), v, s)
	case p.Is(code.Unary) && p.Name == "^":
		p = p.Kid(0)
	}
	of, err := m.eval(p, s)
	if err != nil {
		return false, false, err
	}
	return m.rbCase(of, v, s, at)
}

// rbParts is what an object gives for a pattern of a list or of a hash: a list has itself,
// a hash too, a structure its fields, and any other what its method says.
func (m *machine) rbParts(v any, method string, s *scope, at spot) (any, error) {
	o, isObject := v.(*object)
	if !isObject || o.dict {
		return v, nil
	}
	if f, _ := m.rbFind(o, method); f != nil {
		var args []any
		if method == "deconstruct_keys" {
			args = []any{nil}
		}
		return m.rbInvoke(f, o, args, nil, nil, at)
	}
	if o.class != nil && rbStruct(o.class) {
		v, _, err := m.rbFields(o, map[string]string{"deconstruct": "to_a", "deconstruct_keys": "to_h"}[method], nil, nil, at)
		return v, err
	}
	return v, nil
}

func (m *machine) rbFitsList(p *code.Node, v any, s *scope) (fits, ok bool, err error) {
	parts, err := m.rbParts(v, "deconstruct", s, spot{s.module.file, p})
	if err != nil {
		return false, false, err
	}
	l, isList := parts.(*list)
	if !isList {
		return false, known(parts), nil
	}
	stars := 0
	for _, k := range p.Kids {
		if k.Is(code.Spread) {
			stars++
		}
	}
	if stars > 1 { // a part in the middle, wherever it is
		return false, false, nil
	}
	if len(l.items) < len(p.Kids)-stars || stars == 0 && len(l.items) != len(p.Kids) {
		return false, true, nil
	}
	i := 0
	for _, k := range p.Kids {
		if k.Is(code.Spread) {
			n := len(l.items) - (len(p.Kids) - 1)
			if name := k.Kid(0); name.Is(code.Name) {
				m.rbSet(name.Name, &list{items: slices.Clone(l.items[i : i+n])}, s)
			}
			i += n
			continue
		}
		if fits, ok, err = m.rbFits(k, l.items[i], s); err != nil || !ok || !fits {
			return fits, ok, err
		}
		i++
	}
	return true, true, nil
}

func (m *machine) rbFitsKeys(p *code.Node, v any, s *scope) (fits, ok bool, err error) {
	parts, err := m.rbParts(v, "deconstruct_keys", s, spot{s.module.file, p})
	if err != nil {
		return false, false, err
	}
	h, isHash := parts.(*object)
	if !isHash || !h.dict {
		return false, known(parts), nil
	}
	if len(p.Kids) == 0 {
		return len(h.keys) == 0, true, nil
	}
	used := map[string]bool{}
	for _, k := range p.Kids {
		if k.Is(code.Spread) {
			continue
		}
		x, has := h.get(symbolKey + k.Name)
		if !has {
			return false, true, nil
		}
		used[symbolKey+k.Name] = true
		if k.Kid(0) == nil {
			m.rbSet(k.Name, x, s)
			continue
		}
		if fits, ok, err = m.rbFits(k.Kid(0), x, s); err != nil || !ok || !fits {
			return fits, ok, err
		}
	}
	for _, k := range p.Kids {
		if !k.Is(code.Spread) {
			continue
		}
		rest := newObject()
		rest.dict = true
		for _, name := range h.keys {
			if !used[name] {
				rest.set(name, h.cells[name].v)
			}
		}
		switch name := k.Kid(0); {
		case name.Is(code.Name) && name.Name == "nil":
			return len(rest.keys) == 0, true, nil
		case name.Is(code.Name):
			m.rbSet(name.Name, rest, s)
		}
	}
	return true, true, nil
}
