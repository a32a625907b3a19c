package trace

import "strings"

// Settings of Ruby that libraries keep: those that dry-configurable gives a class
// (dry-configurable 0.9 to 1.3, "Introduction": setting :name, default: value, with a
// constructor or settings within), and those that Figaro puts into the environment.

// rbConfigured calls one of the methods that such a class has; done is false for any other.
func (m *machine) rbConfigured(c *class, name string, args []any, kw *object, block any, at spot) (v any, done bool, err error) {
	if c.settings == nil {
		return nil, false, nil
	}
	switch name {
	case "config":
		return c.settings, true, nil
	case "configure":
		_, err := m.rbYield(block, []any{c.settings}, at)
		return c, true, err
	case "setting":
		key, ok := first(args).(symbol)
		if !ok {
			return nil, true, giveUp("a setting whose name is not known")
		}
		var def any
		if len(args) > 1 { // as the versions before 0.13 have it
			def = args[1]
		}
		make := block
		if kw != nil {
			if v, ok := kw.get(symbolKey + "default"); ok {
				def = v
			}
			if v, ok := kw.get(symbolKey + "constructor"); ok {
				make = v
			}
		}
		switch fn := make.(type) {
		case *function:
			if len(args) < 2 && kw == nil || kw != nil && len(kw.keys) == 0 { // settings within
				in := &class{name: string(key), statics: newObject(), methods: newObject(), settings: rbSettings()}
				if _, err := m.rbRun(fn, in, nil, nil, nil, at); err != nil {
					return nil, true, err
				}
				c.settings.set("@"+string(key), in.settings)
				return nil, true, nil
			}
			if c.settings.class.makers == nil {
				c.settings.class.makers = map[string]*function{}
			}
			c.settings.class.makers[string(key)] = fn
			if def, err = m.rbYield(fn, []any{def}, at); err != nil {
				return nil, true, err
			}
		}
		c.settings.set("@"+string(key), def)
		return nil, true, nil
	}
	return nil, false, nil
}

// rbSettings is a set of settings without any in it.
func rbSettings() *object {
	o := newObject()
	o.class = &class{name: "Config", builtin: true, statics: newObject(), methods: newObject()}
	return o
}

// rbSetting reads or sets one of them.
func (m *machine) rbSetting(o *object, name string, args []any, kw *object, at spot) (v any, done bool, err error) {
	put := func(key string, v any) error {
		if _, ok := o.get("@" + key); !ok {
			return raise("NoMethodError", "no setting "+key)
		}
		if fn := o.class.makers[key]; fn != nil {
			made, err := m.rbYield(fn, []any{v}, at)
			if err != nil {
				return err
			}
			v = made
		}
		o.set("@"+key, v)
		return nil
	}
	switch name {
	case "[]":
		v, _ := o.get("@" + rbShow(first(args)))
		return v, true, nil
	case "[]=":
		if len(args) == 2 {
			return args[1], true, put(rbShow(args[0]), args[1])
		}
	case "update":
		from := kw
		if d, ok := first(args).(*object); ok {
			from = d
		}
		if from != nil {
			for _, k := range from.keys {
				if err := put(strings.TrimPrefix(k, symbolKey), from.cells[k].v); err != nil {
					return nil, true, err
				}
			}
		}
		return o, true, nil
	case "to_h", "values":
		h := newObject()
		h.dict = true
		for _, k := range o.keys {
			h.set(symbolKey+strings.TrimPrefix(k, "@"), o.cells[k].v)
		}
		return h, true, nil
	case "finalize!":
		return o, true, nil
	}
	if plain, ok := strings.CutSuffix(name, "="); ok && len(args) == 1 {
		return args[0], true, put(plain, args[0])
	}
	if v, ok := o.get("@" + name); ok && len(args) == 0 {
		return v, true, nil
	}
	return nil, true, raise("NoMethodError", "no setting "+name)
}

// figaro puts what its file says into the environment where that does not say it already:
// what stands at the top, and over that what stands under the name of the environment
// (Figaro 1.2, "Figaro"). The file and the environment are those of the application that
// is set.
func (m *machine) figaro(of *opaque) error {
	file, stage := "config/application.yml", "development"
	for _, name := range []string{"RACK_ENV", "RAILS_ENV"} {
		if v, ok := m.env.get(name); ok {
			stage = v
		}
	}
	if of.props != nil {
		if v, ok := of.props.get("application"); ok {
			app, isOpaque := v.(*opaque)
			if !isOpaque || app.path != "Figaro.Application.new()" {
				return giveUp("the application of Figaro")
			}
			for _, k := range sortedKeys(app.keys) {
				t, isText := app.keys[k].(string)
				if p, isPath := app.keys[k].(pyPath); isPath {
					t, isText = string(p), true
				}
				switch {
				case !isText:
					return undecided("the %s of Figaro", k)
				case k == "path":
					file = t
				case k == "environment":
					stage = t
				}
			}
		}
	}
	c, ok := m.readFile(file).(*content)
	if !ok {
		return nil // without a file there is nothing to set
	}
	if strings.Contains(c.text, "<%") {
		return giveUp("a template in the settings of Figaro")
	}
	v, err := m.parsed(c)
	if err != nil {
		return err
	}
	all, ok := m.fitted(v).(*object)
	if !ok {
		return giveUp("the settings of Figaro")
	}
	set := newObject()
	take := func(o *object) {
		for _, k := range o.keys {
			if _, nested := o.cells[k].v.(*object); !nested && o.cells[k].v != nil {
				set.set(k, rbShow(o.cells[k].v))
			}
		}
	}
	take(all)
	if in, ok := cellOf(all, stage).(*object); ok {
		take(in)
	}
	m.env.fill(set, false)
	return nil
}
