package trace

import "strings"

// parseArgs is util.parseArgs of Node.js (documentation of Node.js 24, "util",
// util.parseArgs; read 2026-11).
func (m *machine) parseArgs(config *object) (any, bool, error) {
	cell := func(o *object, name string) any {
		if c := o.cells[name]; c != nil {
			return c.v
		}
		return undefined
	}
	options, _ := cell(config, "options").(*object)
	if options == nil {
		options = newObject()
	}
	given := m.words(2)
	if l, ok := cell(config, "args").(*list); ok {
		given = l.items
	}
	if unclear(given, 0) != nil || cell(config, "tokens") == true {
		return dontKnow("the arguments of the command line"), true, nil
	}
	strict := cell(config, "strict") != any(false)
	loose := cell(config, "allowPositionals") == true || !strict && cell(config, "allowPositionals") != any(false)
	values, rest := newObject(), &list{}
	option := func(name string) *object {
		o, _ := cell(options, name).(*object)
		return o
	}
	set := func(name string, v any) {
		if o := option(name); o != nil && cell(o, "multiple") == true {
			l, _ := cell(values, name).(*list)
			if l == nil {
				l = &list{}
			}
			l.items = append(l.items, v)
			v = l
		}
		values.set(name, v)
	}
	wrong := func(what string) (any, bool, error) { return nil, true, raise("Error", what) }
	for i := 0; i < len(given); i++ {
		a := show(given[i])
		if a == "--" {
			if i+1 < len(given) && !loose {
				return wrong("Unexpected argument '" + show(given[i+1]) + "'")
			}
			rest.items = append(rest.items, given[i+1:]...)
			break
		}
		name, v, has := "", "", false
		switch {
		case strings.HasPrefix(a, "--"):
			name, v, has = strings.Cut(a[2:], "=")
			if plain, no := strings.CutPrefix(name, "no-"); no && option(name) == nil && cell(config, "allowNegative") == true {
				set(plain, false)
				continue
			}
		case len(a) > 1 && a[0] == '-':
			for _, k := range options.keys {
				if o := option(k); o != nil && cell(o, "short") == a[1:2] {
					name = k
				}
			}
			if o := option(name); o != nil && cell(o, "type") == "string" {
				v, has = a[2:], len(a) > 2
			} else if len(a) > 2 { // several letters
				given = append(append(append([]any{}, given[:i]...), "-"+a[1:2], "-"+a[2:]), given[i+1:]...)
				i--
				continue
			}
			if name == "" && !strict {
				name = a[1:2]
			}
		default:
			if !loose {
				return wrong("Unexpected argument '" + a + "'")
			}
			rest.items = append(rest.items, a)
			continue
		}
		o := option(name)
		switch {
		case o == nil && strict:
			return wrong("Unknown option '" + a + "'")
		case o != nil && cell(o, "type") == "string" && !has:
			if i+1 >= len(given) || strict && len(show(given[i+1])) > 1 && strings.HasPrefix(show(given[i+1]), "-") {
				if strict {
					return wrong("Option '" + a + "' argument missing")
				}
				set(name, true)
				continue
			}
			i++
			set(name, given[i])
		case has && o != nil && cell(o, "type") == "boolean" && strict:
			return wrong("Option '" + a + "' does not take an argument")
		case has:
			set(name, v)
		default:
			set(name, true)
		}
	}
	for _, k := range options.keys {
		if o := option(k); o != nil && values.cells[k] == nil && o.cells["default"] != nil {
			values.set(k, o.cells["default"].v)
		}
	}
	out := newObject()
	out.set("values", values)
	out.set("positionals", rest)
	return out, true, nil
}
