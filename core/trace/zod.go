package trace

import (
	"math"
	"net/netip"
	"net/url"
	"regexp"
	"slices"
	"strings"
)

// What the library zod makes of data (documentation of zod 3 and 4, "Defining
// schemas").

// zodSchema is a schema, or one step of it: of is what stands before.
type zodSchema struct {
	kind   string
	of     *zodSchema
	args   []any
	coerce bool
	shape  *object // of an object: its fields
	extra  string  // of an object: what becomes of other fields
	obj    *object // what the program sees
	action bool    // it is a step alone, for a pipe (valibot)
}

// zodSelf are steps that change nothing of what is made.
var zodSelf = words("describe brand meta readonly register")

// zodMakers are the calls that start a schema.
var zodMakers = words(`string number int bigint boolean date any unknown undefined null object strictObject looseObject enum nativeEnum literal union
	array tuple record preprocess optional nullable nullish stringbool url email uuid ipv4 ipv6 ip int32 uint32 float32 float64 never custom lazy discriminatedUnion intersection`)

// zodSteps are the methods that give a schema with one more step.
var zodSteps = words(`min max gte lte gt lt int positive nonnegative negative nonpositive finite safe multipleOf step length nonempty regex startsWith endsWith includes
	trim toLowerCase toUpperCase email url uuid ip ipv4 cidr datetime refine superRefine check transform pipe default prefault optional nullable nullish nonoptional catch
	or and array describe brand meta readonly register`)

// zodFails is a value that does not fit.
type zodFails struct{ issues []zodIssue }

type zodIssue struct {
	path []any
	text string
}

// zodCall is a function of the package; done is false where it is none.
func (m *machine) zodCall(f *opaque, args []any) (any, bool, error) {
	name, ok := strings.CutPrefix(f.path, "zod.")
	if !ok {
		return nil, false, nil
	}
	name = strings.TrimPrefix(strings.TrimPrefix(name, "z."), "default.")
	inner, coerce := strings.CutPrefix(name, "coerce.")
	if !zodMakers[inner] {
		return nil, false, nil
	}
	return m.zodMade(inner, args, coerce).obj, true, nil
}

func (m *machine) zodMade(kind string, args []any, coerce bool) *zodSchema {
	s := &zodSchema{kind: kind, args: args, coerce: coerce}
	switch kind {
	case "object", "strictObject", "looseObject":
		s.shape, _ = first(args).(*object)
		s.extra = map[string]string{"object": "strip", "strictObject": "strict", "looseObject": "passthrough"}[kind]
		s.kind = "object"
	case "optional", "nullable", "nullish":
		if of := zodOf(first(args)); of != nil {
			s.of, s.args = of, nil
		}
	}
	return m.zodSeen(s)
}

// zodOf is the schema that the program sees as an object.
func zodOf(v any) *zodSchema {
	if o, ok := v.(*object); ok {
		return o.zod
	}
	return nil
}

// zodSeen gives a schema the object that the program sees.
func (m *machine) zodSeen(s *zodSchema) *zodSchema {
	methods := map[string]func(*machine, []any, spot) (any, error){}
	for k := range zodSteps {
		methods[k] = func(m *machine, args []any, _ spot) (any, error) {
			if zodSelf[k] {
				return s.obj, nil
			}
			return m.zodSeen(&zodSchema{kind: k, of: s, args: args, shape: s.shape}).obj, nil
		}
	}
	for _, k := range []string{"parse", "parseAsync", "safeParse", "safeParseAsync", "spa"} {
		methods[k] = func(m *machine, args []any, at spot) (any, error) {
			v, fails, err := m.zodParse(s, first(args), at, 0)
			if err != nil {
				return nil, err
			}
			var out any = v
			if strings.HasPrefix(k, "parse") {
				if fails != nil {
					err = &thrown{zodError(fails)}
				}
			} else {
				o := newObject()
				o.set("success", fails == nil)
				if fails == nil {
					o.set("data", v)
				} else {
					o.set("error", zodError(fails))
				}
				out = o
			}
			if strings.HasSuffix(k, "Async") || k == "spa" {
				if err != nil {
					return &promise{err: err.(*thrown)}, nil
				}
				return &promise{v: out}, nil
			}
			return out, err
		}
	}
	if s.shape != nil && s.kind == "object" {
		m.zodObject(s, methods)
	}
	s.obj = jsMethods("ZodType", methods)
	s.obj.zod = s
	if s.shape != nil {
		s.obj.set("shape", s.shape)
	}
	if s.kind == "enum" {
		s.obj.set("options", first(s.args))
		if l, ok := first(s.args).(*list); ok {
			all := newObject()
			for _, x := range l.items {
				all.set(show(x), x)
			}
			s.obj.set("enum", all)
			s.obj.set("Values", all)
			s.obj.set("Enum", all)
		}
	}
	return s
}

// zodObject adds what only a schema of an object does.
func (m *machine) zodObject(s *zodSchema, methods map[string]func(*machine, []any, spot) (any, error)) {
	with := func(shape *object, extra string) any {
		return m.zodSeen(&zodSchema{kind: "object", shape: shape, extra: extra}).obj
	}
	for _, k := range []string{"strip", "strict", "passthrough", "loose"} {
		methods[k] = func(*machine, []any, spot) (any, error) { return with(s.shape, k), nil }
	}
	methods["catchall"] = func(*machine, []any, spot) (any, error) { return with(s.shape, "passthrough"), nil }
	for _, k := range []string{"extend", "merge", "safeExtend"} {
		methods[k] = func(_ *machine, args []any, _ spot) (any, error) {
			more, extra := first(args), s.extra
			if of := zodOf(more); of != nil && of.shape != nil {
				more, extra = of.shape, of.extra
			}
			o, ok := more.(*object)
			if !ok {
				return nil, giveUp("a schema of zod")
			}
			shape := newObject()
			for _, from := range []*object{s.shape, o} {
				for _, k := range from.keys {
					shape.set(k, from.cells[k].v)
				}
			}
			return with(shape, extra), nil
		}
	}
	for _, k := range []string{"pick", "omit", "partial", "required"} {
		methods[k] = func(m *machine, args []any, _ spot) (any, error) {
			which, some := first(args).(*object)
			shape := newObject()
			for _, name := range s.shape.keys {
				v := s.shape.cells[name].v
				_, named := s.shape.get(name)
				if named = !some; some {
					_, named = which.get(name)
				}
				switch {
				case k == "pick" && !named, k == "omit" && named && some:
					continue
				case k == "partial" && named:
					if of := zodOf(v); of != nil {
						v = m.zodSeen(&zodSchema{kind: "optional", of: of}).obj
					}
				case k == "required":
					return nil, giveUp("a schema of zod")
				}
				shape.set(name, v)
			}
			return with(shape, s.extra), nil
		}
	}
	methods["keyof"] = func(m *machine, _ []any, _ spot) (any, error) {
		l := &list{}
		for _, k := range s.shape.keys {
			l.items = append(l.items, k)
		}
		return m.zodMade("enum", []any{l}, false).obj, nil
	}
}

// zodError is the error that a schema throws.
func zodError(f *zodFails) *object {
	o := newObject()
	fields := newObject()
	form := &list{}
	issues := &list{}
	for _, x := range f.issues {
		i := newObject()
		i.set("code", "custom")
		i.set("path", &list{items: x.path})
		i.set("message", x.text)
		issues.items = append(issues.items, i)
		if len(x.path) == 0 {
			form.items = append(form.items, x.text)
			continue
		}
		of := show(x.path[0])
		l, _ := fields.get(of)
		if _, ok := l.(*list); !ok {
			l = &list{}
			fields.set(of, l)
		}
		l.(*list).items = append(l.(*list).items, x.text)
	}
	flat := newObject()
	flat.set("formErrors", form)
	flat.set("fieldErrors", fields)
	give := func(v any) func(*machine, []any, spot) (any, error) {
		return func(*machine, []any, spot) (any, error) { return v, nil }
	}
	made := jsMethods("ZodError", map[string]func(*machine, []any, spot) (any, error){
		"flatten": give(flat), "format": give(&opaque{path: "zod.format()", fresh: true}), "toString": give("ZodError"),
	})
	o.class = made.class
	o.set("name", "ZodError")
	o.set("message", "what is given does not fit the schema")
	o.set("issues", issues)
	o.set("errors", issues)
	return o
}

func zodNo(text string) *zodFails { return &zodFails{[]zodIssue{{nil, text}}} }

// zodParse is what a schema makes of a value, or why it does not fit.
func (m *machine) zodParse(s *zodSchema, v any, at spot, depth int) (any, *zodFails, error) {
	if err := m.use(1); err != nil {
		return nil, nil, err
	}
	if depth > 60 {
		return nil, nil, spent("a schema that is nested too deep")
	}
	if _, isEnv := v.(*envMap); !known(v) && !isEnv {
		return nil, nil, undecided("whether what is not known fits a schema")
	}
	missing := v == any(undefined)
	arg := first(s.args)
	inner := func(v any) (any, *zodFails, error) { return m.zodParse(s.of, v, at, depth+1) }
	if s.of == nil {
		return m.zodBase(s, v, at, depth)
	}
	switch s.kind { // what stands around what is before it
	case "optional", "nullable", "nullish":
		if missing && s.kind != "nullable" || v == nil && s.kind != "optional" {
			for x := s.of; missing && x != nil; x = x.of {
				if x.kind == "default" || x.kind == "prefault" || x.kind == "catch" {
					return nil, nil, giveUp("a default of zod that may be left out")
				}
			}
			return v, nil, nil
		}
		return inner(v)
	case "default", "prefault":
		if !missing {
			return inner(v)
		}
		d := arg
		if _, isCall := arg.(*function); isCall {
			x, err := m.call(arg, undefined, nil, nil, at)
			if err != nil {
				return nil, nil, err
			}
			d = x
		}
		if s.kind == "prefault" || s.takesDefault(d) {
			return inner(d)
		}
		return d, nil, nil
	case "catch":
		x, fails, err := inner(v)
		if fails == nil || err != nil {
			return x, nil, err
		}
		if _, isCall := arg.(*function); isCall {
			x, err := m.call(arg, undefined, []any{newObject()}, nil, at)
			return x, nil, err
		}
		return arg, nil, nil
	case "or":
		x, fails, err := inner(v)
		if fails == nil || err != nil {
			return x, nil, err
		}
		if of := zodOf(arg); of != nil {
			return m.zodParse(of, v, at, depth+1)
		}
		return nil, nil, giveUp("a schema of zod")
	case "array":
		return m.zodList(s.of, v, at, depth)
	}
	x, fails, err := inner(v)
	if err != nil || fails != nil {
		return nil, fails, err
	}
	text, isText := x.(string)
	n, isNumber := x.(float64)
	bound := func(holds func(a, b float64) bool) (any, *zodFails, error) {
		limit, ok := arg.(float64)
		if !ok {
			return nil, nil, giveUp("a schema of zod")
		}
		of := n
		switch l := x.(type) {
		case string:
			of = float64(len([]rune(l)))
		case *list:
			of = float64(len(l.items))
		}
		if !holds(of, limit) {
			return nil, zodNo("out of range"), nil
		}
		return x, nil, nil
	}
	test := func(holds bool, why string) (any, *zodFails, error) {
		if !holds {
			return nil, zodNo(why), nil
		}
		return x, nil, nil
	}
	word, _ := arg.(string)
	switch s.kind {
	case "min", "gte":
		return bound(func(a, b float64) bool { return a >= b })
	case "max", "lte":
		return bound(func(a, b float64) bool { return a <= b })
	case "gt":
		return bound(func(a, b float64) bool { return a > b })
	case "lt":
		return bound(func(a, b float64) bool { return a < b })
	case "length":
		return bound(func(a, b float64) bool { return a == b })
	case "multipleOf", "step":
		return bound(func(a, b float64) bool { return math.Mod(a, b) == 0 })
	case "int", "safe", "finite":
		return test(isNumber && (s.kind != "int" || n == math.Trunc(n)) && !math.IsInf(n, 0), "no whole number")
	case "positive":
		return test(n > 0, "not positive")
	case "nonnegative":
		return test(n >= 0, "negative")
	case "negative":
		return test(n < 0, "not negative")
	case "nonpositive":
		return test(n <= 0, "positive")
	case "nonempty":
		if l, ok := x.(*list); ok {
			return test(len(l.items) > 0, "empty")
		}
		return test(text != "", "empty")
	case "startsWith":
		return test(strings.HasPrefix(text, word), "another start")
	case "endsWith":
		return test(strings.HasSuffix(text, word), "another end")
	case "includes":
		return test(strings.Contains(text, word), "not in it")
	case "regex":
		p, ok := arg.(*pattern)
		if !ok {
			return nil, nil, giveUp("a schema of zod")
		}
		re, _, err := p.compiled()
		if err != nil {
			return nil, nil, err
		}
		return test(re.MatchString(text), "another form")
	case "trim":
		return strings.TrimSpace(text), nil, nil
	case "toLowerCase":
		return strings.ToLower(text), nil, nil
	case "toUpperCase":
		return strings.ToUpper(text), nil, nil
	case "email", "url", "uuid", "ip", "ipv4", "ipv6":
		holds, ok := zodForm(s.kind, text)
		if !ok {
			return nil, nil, giveUp("a schema of zod")
		}
		return test(isText && holds, "another form")
	case "refine":
		v, err := m.call(arg, undefined, []any{x}, nil, at)
		if err != nil {
			return nil, nil, err
		}
		if p, ok := v.(*promise); ok {
			v = p.v
		}
		yes, ok := truth(v, false)
		if !ok {
			return nil, nil, undecided("whether a value fits")
		}
		return test(yes, "refused")
	case "transform", "superRefine", "check":
		issues := &zodFails{}
		ctx := jsMethods("RefinementCtx", map[string]func(*machine, []any, spot) (any, error){
			"addIssue": func(*machine, []any, spot) (any, error) {
				issues.issues = append(issues.issues, zodIssue{nil, "refused"})
				return undefined, nil
			},
		})
		ctx.set("issues", &list{})
		v, err := m.call(arg, undefined, []any{x, ctx}, nil, at)
		if err != nil {
			return nil, nil, err
		}
		if l, ok := ctx.cells["issues"].v.(*list); len(issues.issues) > 0 || ok && len(l.items) > 0 {
			return nil, zodNo("refused"), nil
		}
		if s.kind != "transform" {
			return x, nil, nil
		}
		if p, ok := v.(*promise); ok {
			if p.err != nil {
				return nil, nil, p.err
			}
			v = p.v
		}
		return v, nil, nil
	case "pipe":
		if of := zodOf(arg); of != nil {
			return m.zodParse(of, x, at, depth+1)
		}
	}
	return nil, nil, giveUp("a schema of zod")
}

// takesDefault reports whether a default goes through the schema that it stands
// on: in zod 3 it does, in zod 4 it is taken as it is. Where both give the same the
// question does not matter; a text for a number that is coerced is where they differ.
func (s *zodSchema) takesDefault(d any) bool {
	_, text := d.(string)
	for x := s.of; x != nil; x = x.of {
		if x.kind == "transform" || x.kind == "pipe" || x.coerce && text {
			return true
		}
	}
	return false
}

func (m *machine) zodList(of *zodSchema, v any, at spot, depth int) (any, *zodFails, error) {
	l, ok := v.(*list)
	if !ok {
		return nil, zodNo("no list"), nil
	}
	out := &list{}
	fails := &zodFails{}
	for i, x := range l.items {
		y, f, err := m.zodParse(of, x, at, depth+1)
		if err != nil {
			return nil, nil, err
		}
		fails.under(float64(i), f)
		out.items = append(out.items, y)
	}
	if len(fails.issues) > 0 {
		return nil, fails, nil
	}
	return out, nil, nil
}

func (f *zodFails) under(key any, more *zodFails) {
	if more != nil {
		for _, x := range more.issues {
			f.issues = append(f.issues, zodIssue{append([]any{key}, x.path...), x.text})
		}
	}
}

// zodForm tells whether a text has a form that has a name.
func zodForm(kind, text string) (holds, ok bool) {
	switch kind {
	case "url":
		u, err := url.Parse(text)
		return err == nil && u.Scheme != "" && (u.Host != "" || u.Opaque != "" || u.Path != ""), true
	case "ip", "ipv4", "ipv6":
		a, err := netip.ParseAddr(text)
		return err == nil && a.Zone() == "" && (kind != "ipv4" || a.Is4()) && (kind != "ipv6" || a.Is6()), true
	case "email":
		return zodEmail.MatchString(text), true
	}
	return false, false
}

var zodEmail = regexp.MustCompile(`^[A-Za-z0-9_'+\-.]+@([A-Za-z0-9\-]+\.)+[A-Za-z]{2,}$`)

// zodBase is what the start of a schema makes of a value.
func (m *machine) zodBase(s *zodSchema, v any, at spot, depth int) (any, *zodFails, error) {
	arg := first(s.args)
	kind := typeName(v)
	is := func(holds bool) (any, *zodFails, error) {
		if !holds {
			return nil, zodNo("another type"), nil
		}
		return v, nil, nil
	}
	switch s.kind {
	case "string":
		if s.coerce {
			if kind == "object" {
				return nil, nil, giveUp("a schema of zod")
			}
			return show(v), nil, nil
		}
		return is(kind == "string")
	case "number", "int", "float32", "float64", "int32", "uint32":
		if s.coerce {
			n, ok := toNumber(v)
			if v == any(undefined) {
				n, ok = math.NaN(), true
			}
			if !ok {
				return nil, nil, giveUp("a schema of zod")
			}
			v, kind = n, "number"
		}
		n, _ := v.(float64)
		return is(kind == "number" && !math.IsNaN(n) && !math.IsInf(n, 0) && (s.kind == "number" || s.kind[0] == 'f' || n == math.Trunc(n)))
	case "boolean":
		if s.coerce {
			yes, ok := truth(v, false)
			if !ok {
				return nil, nil, undecided("whether a value holds")
			}
			return yes, nil, nil
		}
		return is(kind == "boolean")
	case "stringbool":
		switch strings.ToLower(show(v)) {
		case "true", "1", "yes", "on", "y", "enabled":
			return true, nil, nil
		case "false", "0", "no", "off", "n", "disabled":
			return false, nil, nil
		}
		return is(false)
	case "any", "unknown":
		return v, nil, nil
	case "undefined":
		return is(v == any(undefined))
	case "null":
		return is(v == nil)
	case "never":
		return is(false)
	case "url", "email", "ip", "ipv4", "ipv6":
		text, _ := v.(string)
		holds, _ := zodForm(s.kind, text)
		return is(kind == "string" && holds)
	case "literal":
		all := []any{arg}
		if l, ok := arg.(*list); ok {
			all = l.items
		}
		return is(slices.ContainsFunc(all, func(x any) bool { same, ok := equals(x, v, true); return ok && same }))
	case "enum", "nativeEnum":
		all, ok := []any{}, true
		switch x := arg.(type) {
		case *list:
			all = x.items
		case *object:
			for _, k := range x.keys {
				all = append(all, x.cells[k].v)
			}
		case *class:
			for _, k := range x.statics.keys {
				all = append(all, x.statics.cells[k].v)
			}
		default:
			ok = false
		}
		if !ok {
			return nil, nil, giveUp("a schema of zod")
		}
		return is(slices.ContainsFunc(all, func(x any) bool { same, ok := equals(x, v, true); return ok && same }))
	case "union":
		l, ok := arg.(*list)
		if !ok {
			return nil, nil, giveUp("a schema of zod")
		}
		for _, x := range l.items {
			of := zodOf(x)
			if of == nil {
				return nil, nil, giveUp("a schema of zod")
			}
			y, fails, err := m.zodParse(of, v, at, depth+1)
			if err != nil || fails == nil {
				return y, nil, err
			}
		}
		return is(false)
	case "array":
		if of := zodOf(arg); of != nil {
			return m.zodList(of, v, at, depth)
		}
	case "record":
		o, ok := v.(*object)
		if _, isList := v.(*list); isList || kind != "object" {
			return is(false)
		}
		var of *zodSchema
		if len(s.args) > 0 {
			of = zodOf(s.args[len(s.args)-1])
		}
		if !ok || of == nil {
			break
		}
		out, fails := newObject(), &zodFails{}
		for _, k := range o.keys {
			x, f, err := m.zodParse(of, o.cells[k].v, at, depth+1)
			if err != nil {
				return nil, nil, err
			}
			fails.under(k, f)
			out.set(k, x)
		}
		if len(fails.issues) > 0 {
			return nil, fails, nil
		}
		return out, nil, nil
	case "lazy":
		x, err := m.call(arg, undefined, nil, nil, at)
		if err != nil {
			return nil, nil, err
		}
		if of := zodOf(x); of != nil {
			return m.zodParse(of, v, at, depth+1)
		}
	case "preprocess":
		of := zodOf(at2(s.args, 1))
		if of == nil {
			break
		}
		x, err := m.call(arg, undefined, []any{v}, nil, at)
		if err != nil {
			return nil, nil, err
		}
		return m.zodParse(of, x, at, depth+1)
	case "object":
		if s.shape == nil {
			break
		}
		return m.zodFields(s, v, at, depth)
	}
	return nil, nil, giveUp("a schema of zod")
}

// typeName is what typeof says of a value that is known.
func typeName(v any) string {
	t, err := typeOf(v)
	if name, ok := t.(string); ok && err == nil {
		return name
	}
	return ""
}

// zodFields applies a schema of an object.
func (m *machine) zodFields(s *zodSchema, v any, at spot, depth int) (any, *zodFails, error) {
	var get func(string) any
	var keys []string
	switch x := v.(type) {
	case *envMap:
		keys = m.envKeys()
		get = func(k string) any {
			if t, ok := m.lookup(k, at); ok {
				return t
			}
			return undefined
		}
	case *object:
		keys = x.keys
		get = func(k string) any { y, _ := x.get(k); return y }
	default:
		return nil, zodNo("no object"), nil
	}
	out, fails := newObject(), &zodFails{}
	for _, k := range s.shape.keys {
		of := zodOf(s.shape.cells[k].v)
		if of == nil {
			return nil, nil, giveUp("a schema of zod")
		}
		x, f, err := m.zodParse(of, get(k), at, depth+1)
		if err != nil {
			return nil, nil, err
		}
		fails.under(k, f)
		if f == nil && (x != any(undefined) || slices.Contains(keys, k)) {
			out.set(k, x)
		}
	}
	for _, k := range keys {
		switch {
		case s.shape.cells[k] != nil || s.extra == "strip":
		case s.extra == "strict":
			fails.issues = append(fails.issues, zodIssue{nil, "a key that the schema does not have"})
		default:
			out.set(k, get(k))
		}
	}
	if len(fails.issues) > 0 {
		return nil, fails, nil
	}
	return out, nil, nil
}
