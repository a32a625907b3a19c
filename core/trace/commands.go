package trace

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// Commands of the command line (documentation of click 8, "Commands and Groups";
// Typer 0.20, "Commands"; argparse of Python 3.14, "Sub-commands"), and what
// frameworks keep for a program (Flask 3.1, "Configuration Handling"; Express 5,
// app.set).

// command is a function that a library calls for the command line.
type command struct {
	name    string
	subs    map[string]*function
	context bool // its first parameter is the context
	object  bool // its first parameter is the object of the context
	root    bool // it is called by the program
}

// parser is what a parser of the command line sets by default.
type parser struct {
	of   *opaque
	keys map[string]any
}

// verb is a command of the command line of argparse: under which name what was given
// is kept, and the words that there are.
type verb struct {
	dest  string
	words []string
}

// chosen is the command that was given, by the name under which it is kept.
func (m *machine) chosen(dest string) (any, bool) {
	for _, v := range m.verbs {
		if v.dest != dest {
			continue
		}
		for _, a := range m.argv()[1:] {
			w, ok := a.(string)
			if !ok {
				return nil, false
			}
			if slices.Contains(v.words, w) {
				return w, true
			}
		}
		return nil, len(m.argv()) == 1
	}
	return nil, false
}

// commands makes a function what a decorator of click or Typer makes of it.
func (m *machine) commands(f *function, d *opaque, path string) bool {
	get := func() *command {
		if f.cli == nil {
			f.cli = &command{subs: map[string]*function{}}
		}
		return f.cli
	}
	name := strings.ReplaceAll(f.name, "_", "-")
	if len(d.args) > 0 {
		if s, ok := d.args[0].(string); ok {
			name = s
		}
	}
	switch path {
	case "click.command", "click.group":
		c := get()
		c.name, c.root = name, true
		return true
	case "click.option", "click.argument", "click.version_option", "click.help_option", "click.confirmation_option":
		get()
		return true
	case "click.pass_context":
		get().context = true
		return true
	case "click.pass_obj":
		get().object = true
		return true
	case "typer.Typer().command", "typer.Typer().callback":
		m.waiting = true
		return true
	}
	if d.sub != nil { // of a group
		get().name = name
		d.sub.cli.subs[name] = f
		return true
	}
	return false
}

// cliMethod is what a group is asked for: @group.command().
func (m *machine) cliMethod(f *function, name string, args []any, keys map[string]any) (any, bool) {
	switch name {
	case "command", "group":
		d := &opaque{path: "click.command of a group()", args: args, sub: f}
		if n, ok := keys["name"].(string); ok {
			d.args = []any{n}
		}
		return d, true
	case "add_command":
		if sub, ok := first(args).(*function); ok && sub.cli != nil {
			n := sub.cli.name
			if len(args) > 1 {
				n = show(args[1])
			}
			f.cli.subs[n] = sub
		}
		return nil, true
	}
	return nil, false
}

// runCommand calls the function of a command with what the command line gives.
func (m *machine) runCommand(f *function, at spot) (any, error) {
	ctx := newObject()
	ctx.class = &class{name: "Context", builtin: true, methods: newObject(), statics: newObject()}
	ctx.set("obj", nil)
	ctx.set("params", newObject())
	for name, do := range map[string]func(args []any, keys map[string]any) (any, error){
		"ensure_object": func(args []any, _ map[string]any) (any, error) {
			if v, _ := ctx.get("obj"); v == nil {
				v, err := m.call(first(args), undefined, nil, nil, at)
				if err != nil {
					return nil, err
				}
				ctx.set("obj", v)
			}
			v, _ := ctx.get("obj")
			return v, nil
		},
		"invoke": func(args []any, keys map[string]any) (any, error) {
			fn, ok := first(args).(*function)
			if !ok || fn.cli != nil {
				return nil, giveUp("a command that a command runs")
			}
			return m.call(fn, undefined, args[1:], keys, at)
		},
		"exit": func([]any, map[string]any) (any, error) { return nil, &exit{} },
		"fail": func([]any, map[string]any) (any, error) { return nil, &exit{} },
	} {
		ctx.class.methods.set(name, &function{name: name, native: func(_ *machine, _ any, args []any, keys map[string]any, _ spot) (any, error) {
			return do(args, keys)
		}})
	}
	for range 6 {
		if err := m.runOne(f, ctx, at); err != nil {
			return nil, err
		}
		var next *function
		for _, a := range m.argv()[1:] {
			if s, ok := a.(string); ok && f.cli.subs[s] != nil {
				next = f.cli.subs[s]
				break
			}
		}
		if next == nil {
			return nil, &exit{stays: m.served} // it ends the program when it is done
		}
		f = next
	}
	return nil, giveUp("commands in commands")
}

func (m *machine) runOne(f *function, ctx *object, at spot) error {
	w := *f
	w.cli = nil
	file := f.scope.module.file
	static := file.Funcs[f.node]
	var args []any
	keys := map[string]any{}
	for i, p := range paramsOf(f.node.Kid(0)) {
		switch {
		case i == 0 && f.cli.context:
			args = append(args, ctx)
		case i == 0 && f.cli.object:
			obj, _ := ctx.get("obj")
			args = append(args, obj)
		default:
			if static == nil {
				return giveUp("an option")
			}
			in := &scope{vars: map[string]*cell{}, up: f.scope, module: f.scope.module, static: static}
			v, ok := m.ask(&code.Node{Kind: code.Name, Name: p.Name, Off: f.node.Kid(1).Off, End: f.node.Kid(1).Off}, in)
			if !ok {
				v = dontKnow("the option " + p.Name)
			}
			keys[p.Name] = v
		}
	}
	_, err := m.call(&w, undefined, args, keys, at)
	return err
}

// defaulted is what the parsers of the command line set by default under a
// name: the one of the command that is given before the one of all.
func (m *machine) defaulted(name string) (any, bool) {
	given := m.argv()[1:]
	for _, p := range slices.Backward(m.parsers) {
		v, ok := p.keys[name]
		if !ok {
			continue
		}
		if !strings.HasSuffix(p.of.path, ".add_parser()") {
			return v, true
		}
		if slices.ContainsFunc(given, func(a any) bool { return len(p.of.args) > 0 && a == p.of.args[0] }) {
			return v, true
		}
	}
	return nil, false
}

// gunicorn runs an application that starts gunicorn with settings of its own
// (documentation of gunicorn 23, "Custom Application").
func (m *machine) gunicorn(o *opaque, at spot) error {
	settings := map[string]any{}
	cfg := newObject()
	cfg.class = &class{name: "Config", builtin: true, methods: newObject(), statics: newObject()}
	known := &object{cells: map[string]*cell{}, dict: true}
	for name := range strings.FieldsSeq(gunicornSettings) {
		known.set(name, dontKnow("a setting of gunicorn"))
	}
	cfg.set("settings", known)
	cfg.set("set", &function{native: func(m *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
		if len(args) == 2 {
			settings[show(args[0])] = args[1]
		}
		return nil, nil
	}})
	o.self.set("cfg", cfg)
	if f := m.method(o.self, "load_config"); f != nil {
		if _, err := m.call(f, o.self, nil, nil, at); err != nil {
			return err
		}
	}
	m.note(&opaque{path: "gunicorn.app.base.BaseApplication().run"}, nil, settings, at)
	return &exit{stays: true}
}

// outsideMethod calls a method of something outside of the tree that keeps what
// the program gives it; done is false for any other.
func (m *machine) outsideMethod(o *opaque, name string, args []any, keys map[string]any, s *scope) (any, bool, error) {
	props := func() *object {
		if o.props == nil {
			o.props = newObject()
		}
		return o.props
	}
	if s.python() {
		if o.path == "cherrypy.config" && name == "update" {
			switch c := first(args).(type) {
			case *object:
				for _, k := range c.keys {
					props().set(k, c.cells[k].v)
				}
			case string:
				x, ok := m.readFile(c).(*content)
				if !ok || x.data == nil || x.data.Get("global") == nil {
					return nil, true, giveUp("a file of settings")
				}
				global := x.data.Get("global")
				for i, k := range global.Keys {
					var v any = global.Kids[i].Text
					if x, err := m.pyLiteral(global.Kids[i].Text); err == nil {
						v = x
					}
					props().set(k, v)
				}
			default:
				return nil, true, giveUp("what a configuration is given")
			}
			return nil, true, nil
		}
		if !strings.HasSuffix(o.path, "Flask().config") && !strings.HasSuffix(o.path, "Quart().config") && !strings.HasSuffix(o.path, "Bottle().config") {
			return nil, false, nil
		}
		switch name {
		case "update", "from_mapping":
			for _, a := range args {
				d, ok := a.(*object)
				if !ok {
					return nil, true, giveUp("what a configuration is given")
				}
				for _, k := range d.keys {
					if name == "update" || k == strings.ToUpper(k) {
						props().set(k, d.cells[k].v)
					}
				}
			}
			for _, k := range slices.Sorted(maps.Keys(keys)) {
				if name == "update" || k == strings.ToUpper(k) {
					props().set(k, keys[k])
				}
			}
			return true, true, nil
		case "from_file", "from_json": // of Flask, with what loads it
			from := m.readFile(first(args))
			if t, ok := from.(*thrown); ok {
				if keys["silent"] == true {
					return false, true, nil
				}
				return nil, true, t
			}
			v, err := m.parsed(from)
			if err != nil {
				return nil, true, err
			}
			d, ok := v.(*object)
			if !ok {
				return nil, true, giveUp("a file of settings")
			}
			for _, k := range d.keys {
				if k == strings.ToUpper(k) {
					props().set(k, d.cells[k].v)
				}
			}
			return true, true, nil
		case "from_pyfile", "from_envvar":
			named := first(args)
			if name == "from_envvar" {
				path, set := m.env.get(show(named))
				if !set || path == "" {
					if keys["silent"] == true || len(args) > 1 && args[1] == true {
						return false, true, nil
					}
					return nil, true, certainly("RuntimeError", "the variable "+show(named)+" is not set")
				}
				named = path
			}
			p, ok := m.treePath(pathText(named))
			text, there := m.e.Loader.Text(p)
			if !ok || !there {
				return nil, true, giveUp("a file of settings")
			}
			f := code.ReadAs(code.Python, p, []byte(text), place.NewLines([]byte(text)))
			in := &scope{vars: map[string]*cell{}, module: &module{file: f, exports: newObject()}, this: undefined, own: true}
			in.module.top = in
			if err := m.block(f.Body.Kids, in); err != nil {
				return nil, true, err
			}
			for _, k := range slices.Sorted(maps.Keys(in.vars)) {
				if k == strings.ToUpper(k) {
					props().set(k, in.vars[k].v)
				}
			}
			return true, true, nil
		case "from_prefixed_env": // read as JSON where it is that
			prefix := "FLASK"
			if p, ok := first(args).(string); ok {
				prefix = p
			} else if p, ok := keys["prefix"].(string); ok {
				prefix = p
			}
			for _, k := range m.envKeys() {
				if name, ok := strings.CutPrefix(k, prefix+"_"); ok {
					v, err := m.parseJSON(m.env.text(k))
					if err != nil {
						v = m.env.text(k)
					}
					props().set(name, v)
				}
			}
			return true, true, nil
		case "from_object":
			var from map[string]*cell
			given := first(args)
			if text, ok := given.(string); ok { // by its dotted path
				v, err := m.pyDotted(text, s)
				if err != nil {
					return nil, true, err
				}
				given = v
			}
			switch c := given.(type) {
			case *module:
				from = c.top.vars
			case *class:
				from = map[string]*cell{}
				for _, x := range c.line() {
					for k, v := range x.statics.cells {
						if from[k] == nil {
							from[k] = v
						}
					}
				}
			case *object:
				from = map[string]*cell{}
				for k := range c.cells {
					from[k] = c.cells[k]
				}
				if c.class == nil {
					break
				}
				for _, x := range c.class.line() {
					for _, own := range []*object{x.methods, x.statics} {
						for _, k := range own.keys {
							v := own.cells[k]
							if f, ok := v.v.(*function); ok && f.getter && k == strings.ToUpper(k) && from[k] == nil { // a property
								y, err := m.call(f, c, nil, nil, spot{s.module.file, s.module.file.Body})
								if err != nil {
									return nil, true, err
								}
								v = &cell{v: y}
							}
							if from[k] == nil {
								from[k] = v
							}
						}
					}
				}
			default:
				return nil, true, giveUp("what a configuration is given")
			}
			for _, k := range slices.Sorted(maps.Keys(from)) {
				if k == strings.ToUpper(k) {
					props().set(k, from[k].v)
				}
			}
			return nil, true, nil
		case "get", "setdefault":
			k := show(first(args))
			if o.props != nil {
				if v, ok := o.props.get(k); ok {
					return v, true, nil
				}
			}
			if name == "setdefault" && len(args) > 1 {
				props().set(k, args[1])
			}
			if len(args) > 1 && o.props != nil {
				return args[1], true, nil
			}
		}
		return nil, false, nil
	}
	switch {
	case emitters[o.path]:
		return m.emitter(o, name, args, props, s)
	case name == "register" && strings.HasPrefix(o.path, "fastify") && len(args) > 1 && isPackage(args[0], "@fastify/env"):
		v, done, err := m.envSchema(args[1])
		if err != nil || !done {
			return nil, done, err
		}
		key := "config"
		if k, ok := args[1].(*object).get("confKey"); ok {
			key = show(k)
		}
		props().set(key, v)
		return &promise{v: o}, true, nil
	case name == "register" && strings.HasPrefix(o.path, "fastify"): // a plugin, which is run
		fn, ok := first(args).(*function)
		if !ok {
			return nil, false, nil
		}
		options := at2(args, 1)
		if options == any(undefined) {
			options = newObject()
		}
		done := &function{native: func(*machine, any, []any, map[string]any, spot) (any, error) { return undefined, nil }}
		v, err := m.call(fn, undefined, []any{o, options, done}, nil, spot{s.module.file, s.module.file.Body})
		if err != nil {
			return nil, true, err
		}
		m.waiting = true
		if p, ok := v.(*promise); ok {
			if p.err != nil {
				return &promise{err: p.err}, true, nil
			}
		}
		return &promise{v: o}, true, nil
	case name == "decorate" && len(args) == 2: // Fastify
		props().set(show(args[0]), args[1])
		return o, true, nil
	case name == "set" && len(args) == 2 && strings.HasPrefix(o.path, "express()"):
		if _, plain := args[0].(string); !plain { // any of them
			props().set("\x00set", args[1])
		}
		props().set("\x00set "+show(args[0]), args[1])
		return o, true, nil
	case name == "get" && len(args) == 1 && strings.HasPrefix(o.path, "express()"):
		if o.props != nil {
			if v, ok := o.props.get("\x00set " + show(args[0])); ok {
				return v, true, nil
			}
		}
		switch name, plain := args[0].(string); {
		case name == "env":
			if v, ok := m.lookup("NODE_ENV", spot{s.module.file, s.module.file.Body}); ok && v != "" {
				return v, true, nil
			}
			return "development", true, nil
		case plain && !expressSettings[name] && !(o.props != nil && o.props.cells["\x00set"] != nil):
			return undefined, true, nil
		}
	}
	return nil, false, nil
}

// isPackage reports whether a value is what a package gives.
func isPackage(v any, name string) bool {
	o, ok := v.(*opaque)
	return ok && (o.path == name || o.path == name+".default" || strings.HasPrefix(o.path, name+".") && !strings.Contains(o.path, "("))
}

// emitter is what an emitter of events of its own does (Node.js 24, "Events").
func (m *machine) emitter(o *opaque, name string, args []any, props func() *object, s *scope) (any, bool, error) {
	key := "\x00on " + show(first(args))
	listed := func() *list {
		if c := props().cells[key]; c != nil {
			return c.v.(*list)
		}
		return &list{}
	}
	fn, _ := at2(args, 1).(*function)
	switch {
	case !known(first(args)):
		return nil, false, nil
	case fn != nil && (name == "on" || name == "once" || name == "addListener"):
		l := listed()
		l.items = append(l.items, &list{items: []any{fn, name == "once"}})
		props().set(key, l)
		return o, true, nil
	case fn != nil && (name == "off" || name == "removeListener"):
		l := listed()
		l.items = slices.DeleteFunc(slices.Clone(l.items), func(x any) bool { return x.(*list).items[0] == any(fn) })
		props().set(key, l)
		return o, true, nil
	case name == "emit":
		l := listed()
		now := slices.Clone(l.items)
		l.items = slices.DeleteFunc(l.items, func(x any) bool { return x.(*list).items[1] == true })
		for _, x := range now {
			if _, err := m.call(x.(*list).items[0], o, args[1:], nil, spot{s.module.file, s.module.file.Body}); err != nil {
				return nil, true, err
			}
		}
		return len(now) > 0, true, nil
	}
	return nil, false, nil
}
