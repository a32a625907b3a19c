package trace

import (
	"strings"

	"ubique/core/code"
)

// nestProvider is the one object of a class that the container of Nest keeps (Nest 11,
// "Custom providers"): its constructor gets those of the classes that its parameters have
// as their types.
func (m *machine) nestProvider(c *class, at spot, depth int) (any, bool, error) {
	if o := m.provided[c]; o != nil {
		return o, true, nil
	}
	if depth > 8 || c.node == nil || c.scope == nil || m.nestReplaced(c.name) {
		return nil, true, giveUp("what Nest makes of %s", c.name)
	}
	var args []any
	if v, ok := classKey(c, "constructor", false); ok {
		fn, isFunction := v.(*function)
		if !isFunction || fn.node == nil {
			return nil, true, giveUp("what Nest makes of %s", c.name)
		}
		f := fn.scope.module.file
		for _, p := range paramsOf(fn.node.Kid(0)) {
			of, err := m.eval(&code.Node{Kind: code.Name, Name: typeBehind(f, p), Off: p.Off, End: p.End}, fn.scope)
			if err != nil {
				return nil, true, err
			}
			switch of := of.(type) {
			case *class:
				v, ok, err := m.nestProvider(of, at, depth+1)
				if err != nil || !ok {
					return v, ok, err
				}
				args = append(args, v)
			case *opaque:
				args = append(args, &opaque{path: "@nestjs/core.NestFactory.create().get()", args: []any{of}})
			default:
				return nil, true, giveUp("what Nest gives %s", c.name)
			}
		}
	}
	v, err := m.create(c, args, nil, at)
	if err != nil {
		return nil, true, err
	}
	o, ok := v.(*object)
	if !ok {
		return nil, true, giveUp("what Nest makes of %s", c.name)
	}
	if m.provided == nil {
		m.provided = map[*class]*object{}
	}
	m.provided[c] = o
	return o, true, nil
}

// nestReplaced reports whether a module gives something else for a class: { provide: Name,
// useValue: … }.
func (m *machine) nestReplaced(name string) bool {
	found := false
	for _, f := range m.e.Loader.Loaded() {
		if f.Body == nil || !javascript(f.Lang) {
			continue
		}
		f.Body.Walk(func(n *code.Node) bool {
			found = found || n.Is(code.Pair) && n.Name == "provide" && n.Kid(0).Is(code.Name) && n.Kids[0].Name == name
			return !found
		})
	}
	return found
}

// typeBehind is the name of the type that stands behind a parameter of TypeScript.
func typeBehind(f *code.File, p *code.Node) string {
	rest := strings.TrimLeft(string(f.Src[p.End:min(len(f.Src), int(p.End)+120)]), " \t\n?")
	rest, ok := strings.CutPrefix(rest, ":")
	if !ok { // its end is behind the type
		_, rest, ok = strings.Cut(string(f.Src[p.Off:p.End]), ":")
	}
	if !ok {
		return ""
	}
	rest = strings.TrimSpace(rest)
	end := strings.IndexFunc(rest, func(r rune) bool {
		return !(r == '_' || r == '$' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9')
	})
	if end < 0 {
		return rest
	}
	return rest[:end]
}
