package trace

import "strings"

// yupSchema is a schema of the library yup (yup 1, "API"): what is cast and tested is a
// chain of zod; what stands in for a value that is missing is apart from it.
type yupSchema struct {
	kind     string
	chain    *zodSchema
	fields   *object // of an object
	standsIn any     // the default; undefined for none
	required bool
	nullable bool
	tested   bool // it has a test: what changes values would come before it
	obj      *object
}

// yupSteps are the tests and changes, by the steps of zod that do the same.
var yupSteps = map[string]string{
	"integer": "int", "moreThan": "gt", "lessThan": "lt", "positive": "positive", "negative": "negative", "matches": "regex", "email": "email", "url": "url", "uuid": "uuid", "length": "length",
	"trim": "trim", "lowercase": "toLowerCase", "uppercase": "toUpperCase", "transform": "transform", "min": "min", "max": "max",
}

// yupCall is a function of the package; done is false where it is none.
func (m *machine) yupCall(f *opaque, args []any) (any, bool, error) {
	name := strings.TrimPrefix(strings.TrimPrefix(strings.TrimPrefix(f.path, "yup."), "default."), "yup.")
	switch name {
	case "string", "number", "boolean", "bool", "mixed", "object":
	default:
		return nil, false, nil
	}
	s := &yupSchema{kind: name, standsIn: undefined}
	switch name {
	case "number", "string":
		s.chain = &zodSchema{kind: name, coerce: true}
	case "bool", "boolean":
		s.kind, s.chain = "boolean", &zodSchema{kind: "any"}
	case "object":
		s.fields = newObject()
		if len(args) > 0 {
			if s.fields, _ = args[0].(*object); s.fields == nil {
				return nil, false, nil
			}
		}
	default:
		s.chain = &zodSchema{kind: "any"}
	}
	return m.yupSeen(s).obj, true, nil
}

// yupSeen gives a schema the object that the program sees.
func (m *machine) yupSeen(s *yupSchema) *yupSchema {
	methods := map[string]func(*machine, []any, spot) (any, error){}
	with := func(change func(next *yupSchema, args []any) error) func(*machine, []any, spot) (any, error) {
		return func(m *machine, args []any, _ spot) (any, error) {
			next := *s
			if err := change(&next, args); err != nil {
				return nil, err
			}
			return m.yupSeen(&next).obj, nil
		}
	}
	plain := func(change func(next *yupSchema)) func(*machine, []any, spot) (any, error) {
		return with(func(next *yupSchema, _ []any) error { change(next); return nil })
	}
	for _, k := range strings.Fields("label meta strip unknown noUnknown camelCase concat strict typeError") {
		if k == "label" || k == "meta" || k == "typeError" || k == "unknown" {
			methods[k] = plain(func(*yupSchema) {})
		} else {
			methods[k] = func(*machine, []any, spot) (any, error) { return nil, giveUp("a schema of yup") }
		}
	}
	methods["required"] = plain(func(n *yupSchema) { n.required, n.nullable = true, false })
	methods["defined"] = plain(func(n *yupSchema) { n.required = true })
	methods["notRequired"] = plain(func(n *yupSchema) { n.required, n.nullable = false, true })
	methods["optional"] = plain(func(n *yupSchema) { n.required = false })
	methods["nullable"] = plain(func(n *yupSchema) { n.nullable = true })
	methods["default"] = with(func(n *yupSchema, args []any) error { n.standsIn = first(args); return nil })
	methods["shape"] = with(func(n *yupSchema, args []any) error {
		more, ok := first(args).(*object)
		if !ok || n.fields == nil {
			return giveUp("a schema of yup")
		}
		all := newObject()
		for _, from := range []*object{n.fields, more} {
			for _, k := range from.keys {
				all.set(k, from.cells[k].v)
			}
		}
		n.fields = all
		return nil
	})
	step := func(n *yupSchema, kind string, args ...any) {
		n.chain = &zodSchema{kind: kind, of: n.chain, args: args}
	}
	for k, kind := range yupSteps {
		methods[k] = with(func(n *yupSchema, args []any) error {
			changes := kind == "transform" || strings.HasPrefix(kind, "to") || kind == "trim"
			if n.chain == nil || changes && n.tested {
				return giveUp("a schema of yup")
			}
			n.tested = n.tested || !changes
			step(n, kind, args...)
			return nil
		})
	}
	methods["oneOf"] = with(func(n *yupSchema, args []any) error {
		l, ok := first(args).(*list)
		if !ok || n.chain == nil || unclear(l.items, 0) != nil {
			return giveUp("a schema of yup")
		}
		n.tested = true
		step(n, "refine", &function{name: "oneOf", native: func(_ *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
			for _, x := range l.items {
				if same, ok := equals(x, first(args), true); ok && same {
					return true, nil
				}
			}
			return false, nil
		}})
		return nil
	})
	methods["test"] = with(func(n *yupSchema, args []any) error {
		fn := args[max(0, len(args)-1):]
		if o, ok := first(args).(*object); ok {
			fn = []any{cellOf(o, "test")}
		}
		if f, ok := first(fn).(*function); !ok || n.chain == nil || f.node == nil {
			return giveUp("a schema of yup")
		}
		n.tested = true
		step(n, "refine", fn...)
		return nil
	})
	for _, k := range []string{"validate", "validateSync", "cast", "isValid", "isValidSync"} {
		methods[k] = func(m *machine, args []any, at spot) (any, error) {
			opts, _ := at2(args, 1).(*object)
			strip := opts != nil && cellOf(opts, "stripUnknown") == true
			if opts != nil && cellOf(opts, "strict") == true || k == "cast" && s.fields == nil {
				return nil, giveUp("a schema of yup")
			}
			v, fails, err := m.yupParse(s, first(args), strip, at, 0)
			switch {
			case err != nil:
				return nil, err
			case strings.HasPrefix(k, "isValid"):
				v = fails == nil
			case fails != nil:
				err = &thrown{zodError(fails)}
			}
			if k == "validate" || k == "isValid" {
				if err != nil {
					return &promise{err: err.(*thrown)}, nil
				}
				return &promise{v: v}, nil
			}
			return v, err
		}
	}
	s.obj = jsMethods("YupSchema", methods)
	s.obj.yup = s
	return s
}

// yupParse casts and tests a value.
func (m *machine) yupParse(s *yupSchema, v any, strip bool, at spot, depth int) (any, *zodFails, error) {
	if err := m.use(1); err != nil || depth > 40 {
		return nil, nil, spent("a schema that is nested too deep")
	}
	if _, env := v.(*envMap); env && s.fields != nil {
		v = m.envObject(false)
	}
	if !known(v) {
		return nil, nil, undecided("whether what is not known fits a schema")
	}
	if v == any(undefined) {
		v = s.standsIn
		if f, ok := v.(*function); ok {
			x, err := m.call(f, undefined, nil, nil, at)
			if err != nil {
				return nil, nil, err
			}
			v = x
		}
	}
	text, isText := v.(string)
	switch {
	case v == any(undefined) && s.fields != nil: // the defaults of its fields
		v = newObject()
	case v == any(undefined) && !s.required:
		return v, nil, nil
	case v == any(undefined), v == nil && !s.nullable:
		return nil, zodNo("required"), nil
	case v == nil:
		return v, nil, nil
	case s.kind == "string" && s.required && v == "":
		return nil, zodNo("required"), nil
	case s.kind == "number" && isText:
		if v = strings.Join(strings.Fields(text), ""); v == "" {
			return nil, zodNo("no number"), nil
		}
	case s.kind == "boolean" && isText:
		switch strings.ToLower(text) {
		case "true", "1":
			v = true
		case "false", "0":
			v = false
		default:
			return nil, zodNo("neither true nor false"), nil
		}
	}
	if s.fields == nil {
		return m.zodParse(s.chain, v, at, depth+1)
	}
	o, ok := v.(*object)
	if !ok || o.class != nil {
		return nil, zodNo("another type"), nil
	}
	out, fails := newObject(), (*zodFails)(nil)
	for _, k := range s.fields.keys {
		field, ok := s.fields.cells[k].v.(*object)
		if !ok || field.yup == nil {
			return nil, nil, giveUp("a schema of yup")
		}
		x, more, err := m.yupParse(field.yup, cellOf(o, k), strip, at, depth+1)
		if err != nil {
			return nil, nil, err
		}
		if more != nil {
			if fails == nil {
				fails = &zodFails{}
			}
			fails.under(k, more)
			continue
		}
		if x != any(undefined) || o.cells[k] != nil {
			out.set(k, x)
		}
	}
	if fails != nil {
		return nil, fails, nil
	}
	if !strip {
		for _, k := range o.keys {
			if s.fields.cells[k] == nil {
				out.set(k, o.cells[k].v)
			}
		}
	}
	return out, nil, nil
}
