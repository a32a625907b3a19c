package trace

import (
	"math"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"ubique/core/code"
	"ubique/core/value"
)

// builtinMethod calls a method that values of the language have; done is false
// where there is none of that name.
func (m *machine) builtinMethod(base any, name string, args []any, keys map[string]any, s *scope, at spot) (v any, done bool, err error) {
	size := 0
	switch b := base.(type) {
	case string:
		size = len(b)
	case *list:
		size = len(b.items)
	case *object:
		size = len(b.keys)
	case *content:
		size = len(b.text)
	}
	if err := m.use(size); err != nil {
		return nil, true, err
	}
	py := s.python()
	switch b := base.(type) {
	case string:
		if py {
			if opaqueAmong(args) == nil {
				if v, done, err := m.pyTextMore(b, name, args, keys); done || err != nil {
					return v, done, err
				}
			}
			return m.pyText(b, name, args, keys, s, at)
		}
		return m.jsText(b, name, args, s, at)
	case float64, integer, bool:
		switch name {
		case "toString", "valueOf":
			if name == "valueOf" {
				return base, true, nil
			}
			if len(args) > 0 {
				f, _ := toNumber(base)
				if r, ok := toNumber(args[0]); ok && r >= 2 && r <= 36 && f == math.Trunc(f) {
					return strconv.FormatInt(int64(f), int(r)), true, nil
				}
			}
			return show(base), true, nil
		case "toPrecision", "toExponential":
			f, _ := toNumber(base)
			d, ok := toNumber(first(args))
			if !ok || !(d >= 0 && d <= 100) || len(args) == 0 {
				return dontKnow("a number as text"), true, nil
			}
			if name == "toExponential" {
				t := strconv.FormatFloat(f, 'e', int(d), 64)
				i := strings.IndexByte(t, 'e')
				return t[:i+2] + strings.TrimLeft(t[i+2:i+3], "0") + t[i+3:], true, nil
			}
			t := strconv.FormatFloat(f, 'g', int(d), 64)
			if strings.Contains(t, "e") {
				return dontKnow("a number as text"), true, nil
			}
			if whole, frac, _ := strings.Cut(t, "."); len(strings.TrimLeft(whole, "-0"))+len(frac) < int(d) {
				t = strconv.FormatFloat(f, 'f', int(d)-len(strings.TrimLeft(whole, "-0")), 64)
			}
			return t, true, nil
		case "toLocaleString":
			return dontKnow("a number as people write it"), true, nil
		case "toFixed":
			f, _ := toNumber(base)
			d, _ := toNumber(first(append(args, 0.0)))
			if !(d >= 0 && d <= 100) {
				return dontKnow("a number as text"), true, nil
			}
			return strconv.FormatFloat(f, 'f', int(d), 64), true, nil
		}
		if py && opaqueAmong(args) == nil {
			if v, ok := pyNumberMethod(base, name, args); ok {
				return v, true, nil
			}
			return dontKnow(name), true, nil
		}
	case *list:
		if py {
			return m.pyList(b, name, args, keys, s, at)
		}
		if b.gen && name == "next" {
			o := newObject()
			o.set("done", len(b.items) == 0)
			o.set("value", first(b.items))
			b.items = b.items[min(1, len(b.items)):]
			return o, true, nil
		}
		return m.jsList(b, name, args, s, at)
	case *envMap:
		if d, ok := keys["default"]; ok && py && len(args) == 1 {
			args = append(slices.Clone(args), d)
		}
		return m.envMethod(name, args, py, at)
	case *object:
		return m.objectMethod(b, name, args, keys, s, at)
	case *promise:
		return m.promised(b, name, args, at)
	case *function:
		if b.cli != nil {
			if v, done := m.cliMethod(b, name, args, keys); done {
				return v, true, nil
			}
		}
		switch name {
		case "hasOwnProperty":
			if !py {
				return b.props != nil && b.props.cells[keyText(first(args))] != nil, true, nil
			}
		case "call":
			v, err := m.call(unbound(b), first(args), args[min(1, len(args)):], nil, at)
			return v, true, err
		case "apply":
			var rest []any
			if len(args) > 1 {
				if rest, err = m.items(args[1], s); err != nil {
					return nil, true, err
				}
			}
			v, err := m.call(unbound(b), first(args), rest, nil, at)
			return v, true, err
		case "bind":
			w := *b
			w.this, w.bound = first(args), true
			more := args[min(1, len(args)):]
			if len(more) > 0 {
				return &function{name: b.name, native: func(m *machine, _ any, rest []any, keys map[string]any, at spot) (any, error) {
					return m.call(&w, w.this, append(slices.Clone(more), rest...), keys, at)
				}}, true, nil
			}
			return &w, true, nil
		}
	case *pattern:
		return m.patternMethod(b, name, args)
	case globalNames:
		if c := b.top.vars[show(first(args))]; py && (name == "get" || name == "setdefault") && len(args) > 0 {
			if c != nil {
				v, err := m.read(c)
				return v, true, err
			}
			v := any(nil)
			if len(args) > 1 {
				v = args[1]
			}
			if name == "setdefault" {
				b.top.declare(show(args[0]), v)
			}
			return v, true, nil
		}
		if py && name == "update" {
			d, ok := first(args).(*object)
			if len(args) > 0 && (!ok || d.class != nil && !d.dict) {
				return nil, true, undecided("names that are not known")
			}
			if d != nil {
				for _, k := range d.keys {
					b.top.declare(k, d.cells[k].v)
				}
			}
			for _, k := range sortedKeys(keys) {
				b.top.declare(k, keys[k])
			}
			return nil, true, nil
		}
	case pyPath:
		return m.pathMethod(b, name, args)
	case *content:
		switch name {
		case "toString", "read", "decode", "trim", "strip":
			return b, true, nil
		case "readlines":
			l, err := m.items(b, s)
			return &list{items: l}, true, err
		case "close", "seek":
			return nil, true, nil
		}
		return m.builtinMethod(b.text, name, args, keys, s, at)
	case *super:
		if name == "__init__" || name == "constructor" {
			for _, c := range b.next() {
				if f, ok := classKey(c, name, true); ok {
					v, err := m.call(unbound(f), b.this, args, keys, at)
					return v, true, err
				}
				if o, ok := b.this.(*object); ok && c.data {
					return nil, true, m.fill(c, o, args, keys, at)
				}
			}
			if o, ok := b.this.(*object); ok && o.made != nil {
				at = *o.made
			}
			for _, x := range b.of.bases {
				if o, ok := x.(*opaque); ok && o.path != "object" {
					m.note(o, args, keys, at)
				}
			}
			return nil, true, nil
		}
	case *opaque:
		if _, of, ok := strings.Cut(b.path, ".prototype."); ok && name == "call" && len(args) > 0 && known(args[0]) && javascript(at.f.Lang) {
			return m.builtinMethod(args[0], of, args[1:], keys, s, at)
		}
		if front, _, _ := strings.Cut(b.path, "."); jsStatics[front] && !strings.Contains(b.path, ".prototype") && (name == "apply" || name == "call") && javascript(at.f.Lang) {
			rest := args[min(1, len(args)):]
			if name == "apply" && len(args) > 1 {
				if rest, err = m.items(args[1], s); err != nil {
					return nil, true, err
				}
			}
			return m.builtin(b, rest, nil, at)
		}
		return m.outsideMethod(b, name, args, keys, s)
	}
	return nil, false, nil
}

// jsStatics are the objects of JavaScript whose functions do not ask what they are called
// on.
var jsStatics = words("Object Math JSON Reflect Number console")

func unbound(v any) any {
	if f, ok := v.(*function); ok && f.bound && f.node != nil && f.node.Flag&code.Arrow == 0 && f.home != nil {
		w := *f
		w.bound, w.this = false, nil
		return &w
	}
	return v
}

func (m *machine) promised(p *promise, name string, args []any, at spot) (any, bool, error) {
	if o, ok := p.v.(*opaque); ok && p.err == nil && name != "then" && name != "catch" && name != "finally" && strings.HasPrefix(o.path, "fastify") { // it is the application, too
		if name == "after" && len(args) > 0 {
			if _, err := m.call(args[0], undefined, []any{nil, o, &function{native: func(*machine, any, []any, map[string]any, spot) (any, error) { return undefined, nil }}}, nil, at); err != nil {
				return nil, true, err
			}
			return p, true, nil
		}
		return m.outsideMethod(o, name, args, nil, m.topOf(at))
	}
	run := func(i int, v any) (any, bool, error) {
		if i >= len(args) {
			return p, true, nil
		}
		fn := args[i]
		switch fn.(type) {
		case *function, *opaque, *class:
		default: // what cannot be called is passed over (ECMAScript 2026, 27.2.5.4.1)
			return p, true, nil
		}
		var with []any
		if name != "finally" {
			with = []any{v}
		}
		m.unhandled = nil
		r, err := m.call(fn, undefined, with, nil, at)
		if t, ok := err.(*thrown); ok {
			m.unhandled = t
			return &promise{err: t}, true, nil
		}
		if err != nil {
			return nil, true, err
		}
		if name == "finally" {
			return p, true, nil
		}
		if q, ok := r.(*promise); ok {
			return q, true, nil
		}
		return &promise{v: r}, true, nil
	}
	switch name {
	case "then":
		if p.err != nil {
			return run(1, p.err.v)
		}
		return run(0, p.v)
	case "catch":
		if p.err == nil {
			return p, true, nil
		}
		return run(0, p.err.v)
	case "finally":
		return run(0, nil)
	}
	return nil, false, nil
}

func (m *machine) envMethod(name string, args []any, py bool, at spot) (any, bool, error) {
	key := show(first(args))
	other := any(nil)
	if len(args) > 1 {
		other = args[1]
	}
	v, set := m.lookup(key, at)
	switch name {
	case "get":
		if set {
			return v, true, nil
		}
		return other, true, nil
	case "setdefault":
		if !set {
			if !known(other) {
				return nil, true, giveUp("what a variable is set to")
			}
			m.env.put(key, show(other))
			return other, true, nil
		}
		return v, true, nil
	case "pop":
		m.env.drop(key)
		if set {
			return v, true, nil
		}
		if len(args) < 2 {
			return nil, true, raise("KeyError", key)
		}
		return other, true, nil
	case "update":
		if o, ok := first(args).(*object); ok {
			for _, k := range o.keys {
				m.env.put(k, show(o.cells[k].v))
			}
			return nil, true, nil
		}
		return nil, true, giveUp("what the environment is set to")
	case "items", "keys", "values":
		return m.envObject(py).view(name), true, nil
	case "copy":
		return m.envObject(py), true, nil
	case "hasOwnProperty":
		return set, true, nil
	}
	return nil, false, nil
}

func (m *machine) objectMethod(o *object, name string, args []any, keys map[string]any, s *scope, at spot) (any, bool, error) {
	py := s.python()
	if v, done, err := m.searchMethod(o, name, args, at); done || err != nil {
		return v, done, err
	}
	if v, done, err := m.parserMethod(o, name, args, keys, s, at); done || err != nil {
		return v, done, err
	}
	if py && o.class != nil && o.class.builtin && o.class.name == "Template" && (name == "substitute" || name == "safe_substitute") {
		v, err := m.pyTemplate(o, name, args, keys, at)
		return v, true, err
	}
	if py {
		if v, done, err := m.pyMatched(o, name, args, keys, at); done || err != nil {
			return v, done, err
		}
	}
	if !py && o.cells[name] != nil {
		return nil, false, nil
	}
	if l := matchedTexts(o); l != nil && javascript(at.f.Lang) {
		return m.jsList(l, name, args, s, at)
	}
	if o.class != nil && !o.class.builtin {
		if m.method(o, name) != nil || o.inherits(name) {
			return nil, false, nil
		}
		if o.mapping != nil && dictMethods[name] {
			return m.builtinMethod(o.mapping, name, args, keys, s, at)
		}
		if base := outer(o.class); name == "start" && base != nil && threads[base.path] {
			if run := m.method(o, "run"); run != nil {
				_, err := m.beside(func() (any, error) { return m.call(run, o, nil, nil, at) })
				return nil, true, err
			}
		}
		switch name {
		case "on", "once", "addListener": // an emitter of events
			if fn, ok := at2(args, 1).(*function); ok && outer(o.class) != nil {
				k := "\x00on " + show(first(args))
				l := &list{}
				if c := o.cells[k]; c != nil {
					l = c.v.(*list)
				}
				l.items = append(l.items, fn)
				o.set(k, l)
				return o, true, nil
			}
		case "emit":
			if c := o.cells["\x00on "+show(first(args))]; c != nil && outer(o.class) != nil {
				for _, fn := range c.v.(*list).items {
					if _, err := m.call(fn, o, args[1:], nil, at); err != nil {
						return nil, true, err
					}
				}
				return true, true, nil
			}
		case "_asdict", "model_dump", "dict":
			if o.class.data {
				return o.asDict(), true, nil
			}
			if filledFromOutside(outer(o.class)) && len(args)+len(keys) == 0 {
				if o.cells["\x00base"] == nil { // its fields are there
					return m.pdDict(o, 0), true, nil
				}
				d := newObject()
				d.dict = true
				for _, name := range fieldsOf(o.class) {
					v, err := m.fieldOutside(o, name, at)
					if err != nil {
						return nil, true, err
					}
					d.set(name, v)
				}
				return d, true, nil
			}
		case "_replace":
			return o.with(keys), true, nil
		}
	}
	if o.class != nil && (o.class.name == "Map" || o.class.name == "Set") && o.class.builtin {
		k := keyText(first(args))
		switch name {
		case "get":
			v, ok := o.get(k)
			if !ok && !known(first(args)) && len(o.keys) > 0 {
				return dontKnow("a key that is not known"), true, nil
			}
			return v, true, nil
		case "has":
			_, ok := o.get(k)
			if !ok && !known(first(args)) && len(o.keys) > 0 {
				return dontKnow("a key that is not known"), true, nil
			}
			return ok, true, nil
		case "set":
			if unclear(args[:min(1, len(args))], 3) != nil {
				return nil, true, undecided("a key that is not known")
			}
			o.set(k, at2(args, 1))
			return o, true, nil
		case "add":
			o.set(k, first(args))
			return o, true, nil
		case "delete":
			_, ok := o.get(k)
			o.remove(k)
			return ok, true, nil
		case "entries", "keys", "values":
			l := &list{gen: true}
			for _, k := range o.keys {
				switch {
				case name == "entries":
					l.items = append(l.items, &list{items: []any{k, o.cells[k].v}})
				case name == "keys" && o.class.name == "Map":
					l.items = append(l.items, k)
				default:
					l.items = append(l.items, o.cells[k].v)
				}
			}
			return l, true, nil
		case "forEach":
			for _, k := range slices.Clone(o.keys) {
				if _, err := m.call(first(args), undefined, []any{o.cells[k].v, k}, nil, at); err != nil {
					return nil, true, err
				}
			}
			return undefined, true, nil
		}
	}
	if !py {
		switch name {
		case "hasOwnProperty":
			_, ok := o.get(show(first(args)))
			return ok, true, nil
		case "toString":
			if c := o.cells["href"]; c != nil {
				return c.v, true, nil
			}
			if o.class == nil {
				return "[object Object]", true, nil
			}
		}
		return nil, false, nil
	}
	if !o.dict {
		return nil, false, nil
	}
	if len(args) > 0 && !known(args[0]) {
		switch name {
		case "get", "pop", "setdefault":
			return dontKnow("an element chosen by what is not known"), true, nil
		}
	}
	key := keyText(first(args))
	switch name {
	case "popitem":
		if py && o.dict && len(args) == 0 {
			if len(o.keys) == 0 {
				return nil, true, certainly("KeyError", "popitem(): dictionary is empty")
			}
			k := o.keys[len(o.keys)-1]
			v := o.cells[k].v
			o.remove(k)
			return &list{items: []any{k, v}, tuple: true}, true, nil
		}
	case "get":
		if v, ok := o.get(key); ok {
			return v, true, nil
		}
		if len(args) > 1 {
			return args[1], true, nil
		}
		return keys["default"], true, nil
	case "setdefault":
		if v, ok := o.get(key); ok {
			return v, true, nil
		}
		v := any(nil)
		if len(args) > 1 {
			v = args[1]
		}
		o.set(key, v)
		return v, true, nil
	case "pop":
		if v, ok := o.get(key); ok {
			o.remove(key)
			return v, true, nil
		}
		if len(args) > 1 {
			return args[1], true, nil
		}
		return nil, true, raise("KeyError", key)
	case "update":
		for _, from := range args {
			switch from := from.(type) {
			case *object:
				for _, k := range from.keys {
					o.set(k, from.cells[k].v)
				}
			case *list:
				for _, p := range from.items {
					pair, err := m.items(p, s)
					if err != nil || len(pair) != 2 {
						return nil, true, giveUp("what a dictionary is given")
					}
					if unclear(pair[:1], 3) != nil {
						return nil, true, undecided("a key that is not known")
					}
					o.set(keyText(pair[0]), pair[1])
				}
			case *envMap:
				for _, k := range m.envKeys() {
					o.set(k, m.env.text(k))
				}
			default:
				return nil, true, giveUp("what a dictionary is given")
			}
		}
		for _, k := range sortedKeys(keys) {
			o.set(k, keys[k])
		}
		return nil, true, nil
	case "items", "keys", "values":
		return o.view(name), true, nil
	case "copy":
		return o.asDict(), true, nil
	}
	return nil, false, nil
}

// view lists the names of a map, what it holds, or both.
func (o *object) view(which string) *list {
	l := &list{}
	for _, k := range o.keys {
		switch which {
		case "keys":
			l.items = append(l.items, k)
		case "values":
			l.items = append(l.items, o.cells[k].v)
		default:
			l.items = append(l.items, &list{items: []any{k, o.cells[k].v}, tuple: true})
		}
	}
	return l
}

// with is an object like this one with other values under some names.
func (o *object) with(keys map[string]any) *object {
	w := newObject()
	w.class = o.class
	for _, k := range o.keys {
		w.set(k, o.cells[k].v)
	}
	for _, k := range sortedKeys(keys) {
		w.set(k, keys[k])
	}
	return w
}

// asDict is a dictionary of what an object holds.
func (o *object) asDict() *object {
	w := o.with(nil)
	w.class, w.dict = nil, true
	return w
}

// fieldOutside is the field of an object whose class gets its fields from a library.
func (m *machine) fieldOutside(o *object, name string, at spot) (any, error) {
	if c := o.cells[name]; c != nil {
		return m.read(c)
	}
	if o.made == nil || m.modules[o.made.f.Name] == nil {
		return nil, giveUp("the field %s", name)
	}
	static := m.modules[o.made.f.Name].top.static
	v := m.e.Of(m.e.Expr(o.made.n, static), name, static, at.span())
	if v.Kind == value.External || v.Kind == value.Unknown {
		return nil, giveUp("the field %s", name)
	}
	return m.fromValue(v, 0)
}

// envObject is the environment as a map.
func (m *machine) envObject(dict bool) *object {
	o := newObject()
	o.dict = dict
	for _, k := range m.envKeys() {
		o.set(k, m.env.text(k))
	}
	return o
}

// envTexts is the environment, by name.
func (m *machine) envTexts() map[string]any {
	l := map[string]any{}
	for _, k := range m.envKeys() {
		l[k] = m.env.text(k)
	}
	return l
}

func at2(args []any, i int) any {
	if i < len(args) {
		return args[i]
	}
	return undefined
}

func opaqueAmong(args []any) *opaque {
	for _, a := range args {
		if o, ok := a.(*opaque); ok {
			return o
		}
	}
	return nil
}

func (m *machine) jsText(b, name string, args []any, s *scope, at spot) (any, bool, error) {
	if o := opaqueAmong(args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	if v, done, err := m.jsTextMore(b, name, args, at); done || err != nil {
		return v, done, err
	}
	arg := func(i int) string { return show(at2(args, i)) }
	r := []rune(b)
	place := func(i, def int, fromEnd bool) int {
		if i >= len(args) || args[i] == any(undefined) {
			return def
		}
		f, _ := toNumber(args[i])
		if math.IsNaN(f) {
			f = 0
		}
		if f < 0 {
			if !fromEnd {
				return 0
			}
			f += float64(len(r))
		}
		return max(0, min(len(r), int(f)))
	}
	switch name {
	case "trim":
		return strings.TrimSpace(b), true, nil
	case "trimStart", "trimLeft":
		return strings.TrimLeft(b, " \t\r\n"), true, nil
	case "trimEnd", "trimRight":
		return strings.TrimRight(b, " \t\r\n"), true, nil
	case "toLowerCase", "toLocaleLowerCase":
		return strings.ToLower(b), true, nil
	case "toUpperCase", "toLocaleUpperCase":
		return strings.ToUpper(b), true, nil
	case "toString", "valueOf", "normalize":
		if name == "normalize" && strings.ContainsFunc(b, func(r rune) bool { return r > unicode.MaxASCII }) {
			return dontKnow("a text in another form"), true, nil
		}
		return b, true, nil
	case "startsWith":
		return strings.HasPrefix(b, arg(0)), true, nil
	case "endsWith":
		return strings.HasSuffix(b, arg(0)), true, nil
	case "includes":
		return strings.Contains(b, arg(0)), true, nil
	case "indexOf":
		return float64(strings.Index(b, arg(0))), true, nil
	case "lastIndexOf":
		return float64(strings.LastIndex(b, arg(0))), true, nil
	case "charAt", "at":
		f, _ := toNumber(at2(args, 0))
		if name == "at" && f < 0 {
			f += float64(len(r))
		}
		if f >= 0 && f < float64(len(r)) {
			return string(r[int(f)]), true, nil
		}
		return map[string]any{"charAt": "", "at": undefined}[name], true, nil
	case "charCodeAt", "codePointAt":
		f, _ := toNumber(at2(args, 0))
		if math.IsNaN(f) {
			f = 0
		}
		if f >= 0 && f < float64(len(r)) {
			return float64(r[int(f)]), true, nil
		}
		return math.NaN(), true, nil
	case "slice":
		from, to := place(0, 0, true), place(1, len(r), true)
		return string(r[from:max(from, to)]), true, nil
	case "substring":
		from, to := place(0, 0, false), place(1, len(r), false)
		return string(r[min(from, to):max(from, to)]), true, nil
	case "substr":
		from := place(0, 0, true)
		n := len(r) - from
		if len(args) > 1 {
			f, _ := toNumber(args[1])
			n = max(0, min(n, int(f)))
		}
		return string(r[from : from+n]), true, nil
	case "concat":
		for i := range args {
			b += arg(i)
		}
		return b, true, nil
	case "repeat":
		f, _ := toNumber(at2(args, 0))
		if !(f >= 0) || float64(len(b))*f > maxText || f > maxText {
			return nil, true, spent("a text that is too long")
		}
		return strings.Repeat(b, int(f)), true, nil
	case "padStart", "padEnd":
		f, _ := toNumber(at2(args, 0))
		fill := " "
		if len(args) > 1 {
			fill = arg(1)
		}
		n := int(f) - len(r)
		if n <= 0 || fill == "" || n > maxText {
			return b, true, nil
		}
		pad := string([]rune(strings.Repeat(fill, n/len([]rune(fill))+1))[:n])
		if name == "padEnd" {
			return b + pad, true, nil
		}
		return pad + b, true, nil
	case "split":
		l := &list{}
		if len(args) == 0 || args[0] == any(undefined) {
			return &list{items: []any{b}}, true, nil
		}
		var parts []string
		if p, ok := args[0].(*pattern); ok {
			re, _, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			parts = re.Split(b, -1)
		} else {
			parts = strings.Split(b, arg(0))
		}
		limit := len(parts)
		if len(args) > 1 {
			f, _ := toNumber(args[1])
			limit = min(limit, int(f))
		}
		for _, p := range parts[:min(limit, maxItems)] {
			l.items = append(l.items, p)
		}
		return l, true, nil
	case "replace", "replaceAll":
		to, isText := at2(args, 1).(string)
		if p, ok := at2(args, 0).(*pattern); ok {
			re, global, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			return replaced(re, b, global || name == "replaceAll", func(groups []string) string {
				out := to
				for i := len(groups) - 1; i > 0; i-- {
					out = strings.ReplaceAll(out, "$"+strconv.Itoa(i), groups[i])
				}
				return strings.ReplaceAll(out, "$&", groups[0])
			}), true, nil
		}
		if !isText {
			return nil, true, giveUp("what a text is replaced by")
		}
		if name == "replace" {
			return strings.Replace(b, arg(0), to, 1), true, nil
		}
		return strings.ReplaceAll(b, arg(0), to), true, nil
	case "match", "matchAll", "search":
		p, ok := at2(args, 0).(*pattern)
		if !ok {
			return nil, true, giveUp("what a text matches")
		}
		if re, global, err := p.compiled(); err != nil {
			return nil, true, err
		} else if name == "match" && global {
			l := &list{}
			for _, t := range re.FindAllString(b, maxItems) {
				l.items = append(l.items, t)
			}
			if len(l.items) == 0 {
				return nil, true, nil
			}
			return l, true, nil
		} else if name == "matchAll" {
			l, rest, from := &list{}, b, 0
			for len(l.items) < maxItems {
				loc := re.FindStringIndex(rest)
				if loc == nil {
					break
				}
				v, _, err := m.patternMethod(p, "exec", []any{rest[loc[0]:]})
				if err != nil {
					return nil, true, err
				}
				if o, ok := v.(*object); ok {
					o.set("index", float64(from+loc[0]))
				}
				l.items = append(l.items, v)
				step := max(loc[1], loc[0]+1)
				if step > len(rest) {
					break
				}
				rest, from = rest[step:], from+step
			}
			return l, true, nil
		}
		if name == "search" {
			re, _, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			if loc := re.FindStringIndex(b); loc != nil {
				return float64(loc[0]), true, nil
			}
			return -1.0, true, nil
		}
		return m.patternMethod(p, "exec", []any{b})
	}
	return nil, false, nil
}

func replaced(re *regexp.Regexp, in string, all bool, by func([]string) string) string {
	var b strings.Builder
	last := 0
	for i, loc := range re.FindAllStringSubmatchIndex(in, 1000) {
		if i > 0 && !all {
			break
		}
		var groups []string
		for g := 0; g < len(loc); g += 2 {
			if loc[g] < 0 {
				groups = append(groups, "")
			} else {
				groups = append(groups, in[loc[g]:loc[g+1]])
			}
		}
		b.WriteString(in[last:loc[0]])
		b.WriteString(by(groups))
		last = loc[1]
	}
	b.WriteString(in[last:])
	return b.String()
}

// compiled is a pattern as Go has it, and whether it is for all matches.
func (p *pattern) compiled() (*regexp.Regexp, bool, error) {
	if p.v.Kind != value.External || len(p.v.Kids) == 0 {
		return nil, false, giveUp("a regular expression")
	}
	if p.re == nil {
		re, err := regexp.Compile(p.v.Kids[0].Text)
		if err != nil {
			return nil, false, giveUp("a regular expression")
		}
		p.re = re
	}
	return p.re, p.v.Num == 1, nil
}

// compile compiles a regular expression once.
func (m *machine) compile(text string) (*regexp.Regexp, error) {
	if re := m.patterns[text]; re != nil {
		return re, nil
	}
	re, err := regexp.Compile(text)
	if err != nil {
		return nil, err
	}
	if m.patterns == nil {
		m.patterns = map[string]*regexp.Regexp{}
	}
	m.patterns[text] = re
	return re, nil
}

func (m *machine) patternMethod(p *pattern, name string, args []any) (any, bool, error) {
	if name != "test" && name != "exec" {
		return nil, false, nil
	}
	if o := opaqueAmong(args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	re, _, err := p.compiled()
	if err != nil {
		return nil, true, err
	}
	text := show(first(args))
	if name == "test" {
		return re.MatchString(text), true, nil
	}
	loc := re.FindStringSubmatchIndex(text)
	if loc == nil {
		return nil, true, nil
	}
	o := newObject()
	groups := newObject()
	for g, name := range re.SubexpNames() {
		v := any(undefined)
		if loc[2*g] >= 0 {
			v = text[loc[2*g]:loc[2*g+1]]
		}
		o.set(strconv.Itoa(g), v)
		if name != "" {
			groups.set(name, v)
		}
	}
	o.set("index", float64(loc[0]))
	o.set("groups", groups)
	o.class = &class{name: "match", data: true, methods: newObject(), statics: newObject(), builtin: true}
	return o, true, nil
}

func (m *machine) jsList(b *list, name string, args []any, s *scope, at spot) (any, bool, error) {
	if v, done, err := m.jsListMore(b, name, args, s, at); done || err != nil {
		return v, done, err
	}
	each := func(i int) (any, error) {
		return m.call(first(args), undefined, []any{b.items[i], float64(i), b}, nil, at)
	}
	yes := func(i int) (bool, error) {
		if o, ok := first(args).(*opaque); ok && o.path == "Boolean" {
			return m.decide(b.items[i], s, at.n)
		}
		v, err := each(i)
		if err != nil {
			return false, err
		}
		return m.decide(v, s, at.n)
	}
	place := func(i, def int) int {
		if i >= len(args) || args[i] == any(undefined) {
			return def
		}
		f, _ := toNumber(args[i])
		if f < 0 {
			f += float64(len(b.items))
		}
		return max(0, min(len(b.items), int(f)))
	}
	switch name {
	case "push":
		if len(b.items)+len(args) > maxItems {
			return nil, true, spent("a list that is too long")
		}
		b.items = append(b.items, args...)
		return float64(len(b.items)), true, nil
	case "unshift":
		b.items = append(slices.Clone(args), b.items...)
		return float64(len(b.items)), true, nil
	case "pop", "shift":
		if len(b.items) == 0 {
			return undefined, true, nil
		}
		if name == "pop" {
			v := b.items[len(b.items)-1]
			b.items = b.items[:len(b.items)-1]
			return v, true, nil
		}
		v := b.items[0]
		b.items = slices.Clone(b.items[1:])
		return v, true, nil
	case "slice":
		from, to := place(0, 0), place(1, len(b.items))
		return &list{items: slices.Clone(b.items[from:max(from, to)])}, true, nil
	case "splice":
		from := place(0, 0)
		n := len(b.items) - from
		if len(args) > 1 {
			f, _ := toNumber(args[1])
			n = max(0, min(n, int(f)))
		}
		out := &list{items: slices.Clone(b.items[from : from+n])}
		b.items = slices.Replace(slices.Clone(b.items), from, from+n, args[min(2, len(args)):]...)
		return out, true, nil
	case "concat":
		l := &list{items: slices.Clone(b.items)}
		for _, a := range args {
			if x, ok := a.(*list); ok {
				l.items = append(l.items, x.items...)
			} else {
				l.items = append(l.items, a)
			}
		}
		return l, true, nil
	case "join":
		sep := ","
		if len(args) > 0 {
			sep = show(args[0])
		}
		if o := opaqueAmong(b.items); o != nil {
			return dontKnow("a text with " + o.String()), true, nil
		}
		parts := make([]string, len(b.items))
		for i, x := range b.items {
			x, err := m.jsPrimitive(x, "string", s, at.n)
			if err != nil {
				return nil, true, err
			}
			if !known(x) {
				return dontKnow("a text with " + x.(*opaque).String()), true, nil
			}
			if x != nil && x != any(undefined) {
				parts[i] = show(x)
			}
		}
		return strings.Join(parts, sep), true, nil
	case "reverse", "toReversed":
		l := b
		if name == "toReversed" {
			l = &list{items: slices.Clone(b.items)}
		}
		slices.Reverse(l.items)
		return l, true, nil
	case "includes", "indexOf", "lastIndexOf":
		at, open := -1, false
		for i, x := range b.items {
			same, ok := equals(x, first(args), true)
			if !ok && (at < 0 || name == "lastIndexOf") {
				open = true
			}
			if same && (at < 0 || name == "lastIndexOf") {
				at = i
				open = open && name == "indexOf"
			}
		}
		if open {
			return dontKnow("whether a list holds something"), true, nil
		}
		if name == "includes" {
			return at >= 0, true, nil
		}
		return float64(at), true, nil
	case "at":
		f, _ := toNumber(first(args))
		if f < 0 {
			f += float64(len(b.items))
		}
		if f >= 0 && f < float64(len(b.items)) {
			return b.items[int(f)], true, nil
		}
		return undefined, true, nil
	case "keys", "entries", "values":
		l := &list{gen: true}
		for i, x := range b.items {
			switch name {
			case "keys":
				l.items = append(l.items, float64(i))
			case "entries":
				l.items = append(l.items, &list{items: []any{float64(i), x}})
			default:
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "map", "forEach", "flatMap":
		l := &list{}
		for i := range b.items {
			v, err := each(i)
			if err != nil {
				return nil, true, err
			}
			if y, ok := v.(*list); ok && name == "flatMap" {
				l.items = append(l.items, y.items...)
			} else {
				l.items = append(l.items, v)
			}
		}
		if name == "forEach" {
			return undefined, true, nil
		}
		return l, true, nil
	case "filter", "find", "findIndex", "some", "every", "findLast":
		l := &list{}
		for k := range b.items {
			i := k
			if name == "findLast" {
				i = len(b.items) - 1 - k
			}
			ok, err := yes(i)
			if err != nil {
				return nil, true, err
			}
			switch {
			case name == "every" && !ok:
				return false, true, nil
			case !ok:
			case name == "find" || name == "findLast":
				return b.items[i], true, nil
			case name == "findIndex":
				return float64(i), true, nil
			case name == "some":
				return true, true, nil
			default:
				l.items = append(l.items, b.items[i])
			}
		}
		switch name {
		case "find", "findLast":
			return undefined, true, nil
		case "findIndex":
			return -1.0, true, nil
		case "some", "every":
			return name == "every", true, nil
		}
		return l, true, nil
	case "reduce", "reduceRight":
		items := slices.Clone(b.items)
		if name == "reduceRight" {
			slices.Reverse(items)
		}
		if len(args) < 2 {
			if len(items) == 0 {
				return nil, true, certainly("TypeError", "Reduce of empty array with no initial value")
			}
			args = []any{first(args), items[0]}
			items = items[1:]
		}
		v := args[1]
		for i, x := range items {
			var err error
			if v, err = m.call(args[0], undefined, []any{v, x, float64(i)}, nil, at); err != nil {
				return nil, true, err
			}
		}
		return v, true, nil
	case "sort", "toSorted":
		l := &list{items: slices.Clone(b.items)}
		if o := opaqueAmong(l.items); o != nil {
			return nil, true, giveUp("a list that is sorted")
		}
		var failed error
		slices.SortStableFunc(l.items, func(x, y any) int {
			if fn, ok := first(args).(*function); ok {
				v, err := m.call(fn, undefined, []any{x, y}, nil, at)
				if err != nil {
					failed = err
					return 0
				}
				f, ok := toNumber(v)
				if !ok {
					failed = giveUp("a list that is sorted")
				}
				return compare(f, 0)
			}
			return strings.Compare(show(x), show(y))
		})
		if name == "sort" && failed == nil {
			b.items = l.items
			return b, true, nil
		}
		return l, true, failed
	case "toString":
		return show(b), true, nil
	}
	return nil, false, nil
}

func (m *machine) pathMethod(p pyPath, name string, args []any) (any, bool, error) {
	switch name {
	case "resolve", "absolute", "expanduser":
		return p, true, nil
	case "joinpath":
		s := string(p)
		for _, a := range args {
			s = path.Join(s, pathText(a))
		}
		return pyPath(s), true, nil
	case "exists", "is_file", "is_dir":
		return m.there(string(p), name != "is_dir", name != "is_file"), true, nil
	case "read_text", "open", "read_bytes":
		v := m.readFile(p)
		if t, ok := v.(*thrown); ok {
			return nil, true, t
		}
		return v, true, nil
	case "as_posix", "__str__":
		return string(p), true, nil
	case "is_absolute":
		return strings.HasPrefix(string(p), "/"), true, nil
	case "relative_to":
		base := strings.TrimSuffix(pathText(first(args)), "/") + "/"
		if rest, ok := strings.CutPrefix(string(p), base); ok && len(args) == 1 {
			return pyPath(rest), true, nil
		}
	case "with_stem":
		return pyPath(path.Join(path.Dir(string(p)), show(first(args))+path.Ext(string(p)))), true, nil
	case "with_name":
		return pyPath(path.Join(path.Dir(string(p)), show(first(args)))), true, nil
	case "with_suffix":
		return pyPath(strings.TrimSuffix(string(p), path.Ext(string(p))) + show(first(args))), true, nil
	}
	return nil, false, nil
}
