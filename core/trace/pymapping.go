package trace

// Classes of Python that come from dict (Python 3.14 library reference, "Mapping
// Types", "collections.UserDict").

var dictBases = words("dict collections.UserDict collections.OrderedDict")

// dictMethods are the methods that such a class has from dict.
var dictMethods = words("get items keys values pop popitem setdefault update copy clear fromkeys")

// mapped fills the dictionary that an object is.
func (m *machine) mapped(o *object, args []any, keys map[string]any, at spot) error {
	v, done, err := m.pyBuiltin(&opaque{path: "dict"}, args, keys, at)
	if err != nil {
		return err
	}
	d, ok := v.(*object)
	if !done || !ok {
		return giveUp("what a dictionary is made of")
	}
	for _, k := range d.keys {
		o.mapping.set(k, d.cells[k].v)
	}
	return nil
}

// mappingKey is what super() gives in such a class.
func (m *machine) mappingKey(o *object, name string, s *scope) (any, error) {
	return &function{name: name, native: func(m *machine, _ any, args []any, keys map[string]any, at spot) (any, error) {
		switch name {
		case "__init__":
			return nil, m.mapped(o, args, keys, at)
		case "__getitem__":
			if v, ok := o.mapping.get(keyText(first(args))); ok {
				return v, nil
			}
			if f := m.method(o, "__missing__"); f != nil {
				return m.call(f, o, args, nil, at)
			}
			return nil, raise("KeyError", show(first(args)))
		case "__setitem__":
			if len(args) == 2 && known(args[0]) {
				o.mapping.set(keyText(args[0]), args[1])
				return nil, nil
			}
		case "__contains__":
			yes, ok := m.contains(o.mapping, first(args), true)
			if ok {
				return yes, nil
			}
		case "__setattr__":
			if len(args) == 2 {
				o.set(show(args[0]), args[1])
				return nil, nil
			}
		}
		if dictMethods[name] {
			if v, done, err := m.builtinMethod(o.mapping, name, args, keys, s, at); done || err != nil {
				return v, err
			}
		}
		return nil, giveUp("%s of a dictionary", name)
	}}, nil
}
