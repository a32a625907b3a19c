package trace

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// What libraries of JavaScript make of the settings of a program: zod, valibot, convict,
// env-var and nconf.

// jsSettings is a function of one of these libraries; done is false where it is none.
func (m *machine) jsSettings(f *opaque, args []any, at spot) (any, bool, error) {
	pkg, _, _ := strings.Cut(f.path, ".")
	switch pkg {
	case "zod":
		return m.zodCall(f, args)
	case "valibot":
		return m.valibotCall(f, args, at)
	case "convict":
		switch f.path {
		case "convict", "convict.default":
			if o, ok := first(args).(*object); ok {
				v, err := m.convict(o, at)
				return v, true, err
			}
		case "convict.addFormat", "convict.addFormats", "convict.addParser":
			return nil, true, giveUp("formats of convict")
		}
	case "env-var":
		switch f.path {
		case "env-var.get", "env-var.default.get":
			return m.envVarGet(&envMap{}, args, at)
		case "env-var.from", "env-var.default.from":
			from := first(args)
			switch from.(type) {
			case *object, *envMap:
			default:
				return nil, false, nil
			}
			if len(args) > 1 {
				return nil, false, nil
			}
			return jsMethods("env-var", map[string]func(*machine, []any, spot) (any, error){
				"get": func(m *machine, args []any, at spot) (any, error) {
					v, _, err := m.envVarGet(from, args, at)
					return v, err
				},
			}), true, nil
		}
	case "nconf":
		return m.nconfCall(f, args, at)
	case "yup":
		return m.yupCall(f, args)
	case "minimist", "mri", "arg", "sade", "rc":
		return m.jsOptions(f, args, at)
	case "json5":
		switch c := first(args).(type) {
		case *content:
			v, err := m.json5(c.text)
			return v, true, err
		case string:
			v, err := m.json5(c)
			return v, true, err
		}
	}
	return nil, false, nil
}

// envVarGet is a variable of env-var (env-var 7, API documentation): what is not as
// it is asked for throws.
func (m *machine) envVarGet(from any, args []any, at spot) (any, bool, error) {
	name, ok := first(args).(string)
	if !ok {
		return nil, false, nil
	}
	var v any = undefined
	switch x := from.(type) {
	case *envMap:
		if t, ok := m.lookup(name, at); ok {
			v = t
		}
	case *object:
		v, _ = x.get(name)
	}
	set := v != any(undefined)
	must := false
	fail := func(why string) error { return raise("EnvVarError", name+" "+why) }
	o := newObject()
	methods := map[string]func(*machine, []any, spot) (any, error){
		"default": func(_ *machine, args []any, _ spot) (any, error) {
			if !set {
				if v = first(args); v != any(undefined) {
					v = show(v)
				}
			}
			return o, nil
		},
		"required": func(_ *machine, args []any, _ spot) (any, error) {
			must = len(args) == 0 || args[0] != false
			return o, nil
		},
		"example": func(*machine, []any, spot) (any, error) { return o, nil },
	}
	as := func(conv func(text string, args []any) (any, error)) func(*machine, []any, spot) (any, error) {
		return func(_ *machine, args []any, _ spot) (any, error) {
			if !known(v) {
				return nil, undecided("a variable")
			}
			if v == any(undefined) {
				if must {
					return nil, fail("is a required variable, but it was not set")
				}
				return undefined, nil
			}
			text := show(v)
			if must && strings.TrimSpace(text) == "" {
				return nil, fail("is a required variable, but its value was empty")
			}
			return conv(text, args)
		}
	}
	whole := func(text string) (float64, bool) {
		n := parseInt(text, 10)
		return n, !math.IsNaN(n) && number(n) == text
	}
	methods["asString"] = as(func(t string, _ []any) (any, error) { return t, nil })
	for k, fits := range map[string]func(float64) bool{
		"asInt": func(float64) bool { return true }, "asIntPositive": func(n float64) bool { return n >= 0 },
		"asIntNegative": func(n float64) bool { return n <= 0 }, "asPortNumber": func(n float64) bool { return n >= 0 && n <= 65535 },
	} {
		methods[k] = as(func(t string, _ []any) (any, error) {
			if n, ok := whole(t); ok && fits(n) {
				return n, nil
			}
			return nil, fail("is not as it should be")
		})
	}
	methods["asFloat"] = as(func(t string, _ []any) (any, error) {
		if n, ok := toNumber(t); ok && !math.IsNaN(n) {
			return n, nil
		}
		return nil, fail("should be a valid float")
	})
	methods["asBool"] = as(func(t string, _ []any) (any, error) {
		switch strings.ToLower(t) {
		case "true", "1":
			return true, nil
		case "false", "0":
			return false, nil
		}
		return nil, fail("should be either true, false")
	})
	methods["asBoolStrict"] = as(func(t string, _ []any) (any, error) {
		switch strings.ToLower(t) {
		case "true":
			return true, nil
		case "false":
			return false, nil
		}
		return nil, fail("should be either true, false")
	})
	methods["asArray"] = as(func(t string, args []any) (any, error) {
		sep := ","
		if len(args) > 0 {
			sep = show(args[0])
		}
		l := &list{}
		for p := range strings.SplitSeq(t, sep) {
			if p != "" {
				l.items = append(l.items, p)
			}
		}
		return l, nil
	})
	methods["asEnum"] = as(func(t string, args []any) (any, error) {
		l, ok := first(args).(*list)
		if !ok {
			return nil, giveUp("the values of a variable")
		}
		if slices.Contains(l.items, any(t)) {
			return t, nil
		}
		return nil, fail("should be one of")
	})
	for _, k := range []string{"asJson", "asJsonObject", "asJsonArray"} {
		methods[k] = as(func(t string, _ []any) (any, error) {
			x, err := m.parseJSON(t)
			if err != nil {
				return nil, fail("should be valid JSON")
			}
			return x, nil
		})
	}
	o.class = jsMethods("env-var", methods).class
	return o, true, nil
}

// convictField is a setting of convict.
type convictField struct {
	path   string
	spec   *object
	format any
}

// convict is a configuration of convict (convict 6, "Configuration schema" and
// "Precedence order": default, file, environment, command line).
func (m *machine) convict(schema *object, at spot) (any, error) {
	root := newObject()
	var fields []convictField
	var grow func(spec, into *object, prefix string, depth int) error
	grow = func(spec, into *object, prefix string, depth int) error {
		if depth > 20 {
			return spent("a schema that is nested too deep")
		}
		if err := m.use(64 * len(spec.keys)); err != nil {
			return err
		}
		for _, k := range spec.keys {
			if k == "$schema" || k == "_cvtProperties" {
				continue
			}
			p := prefix + k
			x := spec.cells[k].v
			o, ok := x.(*object)
			if !ok { // a value stands for its default
				o = newObject()
				o.set("default", x)
			}
			if _, leaf := o.get("default"); leaf {
				fields = append(fields, convictField{p, o, cellOf(o, "format")})
				def := m.copied(cellOf(o, "default"))
				if t, ok := def.(string); ok {
					def = convictCoerce(cellOf(o, "format"), def, t)
				}
				into.set(k, def)
				continue
			}
			below := newObject()
			into.set(k, below)
			if err := grow(o, below, p+".", depth+1); err != nil {
				return err
			}
		}
		return nil
	}
	if err := grow(schema, root, "", 0); err != nil {
		return nil, err
	}
	outer := func() error { // the environment, then the command line
		for _, f := range fields {
			if name, ok := cellOf(f.spec, "env").(string); ok {
				if t, set := m.lookup(name, at); set {
					setPath(root, f.path, convictCoerce(f.format, cellOf(f.spec, "default"), t))
				}
			}
		}
		for _, f := range fields {
			name, ok := cellOf(f.spec, "arg").(string)
			if !ok {
				continue
			}
			words := m.words(2)
			for i, w := range words {
				t, ok := w.(string)
				if !ok {
					return undecided("the arguments of the command line")
				}
				if rest, ok := strings.CutPrefix(t, "--"+name+"="); ok {
					setPath(root, f.path, convictCoerce(f.format, cellOf(f.spec, "default"), rest))
				} else if t == "--"+name && i+1 < len(words) {
					setPath(root, f.path, convictCoerce(f.format, cellOf(f.spec, "default"), show(words[i+1])))
				}
			}
		}
		return nil
	}
	if err := outer(); err != nil {
		return nil, err
	}
	c := newObject()
	var load func(v any, prefix string) error
	load = func(v any, prefix string) error {
		o, ok := v.(*object)
		if !ok || strings.Count(prefix, ".") > 20 {
			return giveUp("what convict loads")
		}
		if err := m.use(64 * len(o.keys)); err != nil {
			return err
		}
		for _, k := range o.keys {
			if below, ok := o.cells[k].v.(*object); ok && len(below.keys) > 0 && !slices.ContainsFunc(fields, func(f convictField) bool { return f.path == prefix+k }) {
				if err := load(below, prefix+k+"."); err != nil {
					return err
				}
				continue
			}
			x := o.cells[k].v
			for _, f := range fields {
				if t, ok := x.(string); ok && f.path == prefix+k {
					x = convictCoerce(f.format, cellOf(f.spec, "default"), t)
				}
			}
			setPath(root, prefix+k, x)
		}
		return nil
	}
	find := func(p string) (any, bool) {
		var v any = root
		for part := range strings.SplitSeq(p, ".") {
			o, ok := v.(*object)
			if !ok || o.cells[part] == nil {
				return undefined, false
			}
			v = o.cells[part].v
		}
		return v, true
	}
	c.class = jsMethods("convict", map[string]func(*machine, []any, spot) (any, error){
		"get": func(m *machine, args []any, _ spot) (any, error) {
			if len(args) == 0 || args[0] == any(undefined) {
				return root, nil
			}
			p, ok := args[0].(string)
			if !ok {
				return nil, undecided("which setting is read")
			}
			v, there := find(p)
			if !there {
				return nil, raise("Error", "cannot find configuration param '"+p+"'")
			}
			return m.copied(v), nil
		},
		"has": func(_ *machine, args []any, _ spot) (any, error) {
			_, there := find(show(first(args)))
			return there, nil
		},
		"default": func(_ *machine, args []any, _ spot) (any, error) {
			for _, f := range fields {
				if f.path == show(first(args)) {
					return cellOf(f.spec, "default"), nil
				}
			}
			return nil, giveUp("a default of convict")
		},
		"set": func(_ *machine, args []any, _ spot) (any, error) {
			p, ok := first(args).(string)
			if !ok {
				return nil, undecided("which setting is set")
			}
			x := at2(args, 1)
			for _, f := range fields {
				if t, ok := x.(string); ok && f.path == p {
					x = convictCoerce(f.format, cellOf(f.spec, "default"), t)
				}
			}
			setPath(root, p, x)
			return c, nil
		},
		"load": func(_ *machine, args []any, _ spot) (any, error) {
			if err := load(first(args), ""); err != nil {
				return nil, err
			}
			return c, outer()
		},
		"loadFile": func(m *machine, args []any, _ spot) (any, error) {
			files := []any{first(args)}
			if l, ok := first(args).(*list); ok {
				files = l.items
			}
			for _, f := range files {
				p, ok := m.treePath(pathText(f))
				if _, isText := f.(string); !ok && !isText {
					return nil, undecided("which file is loaded")
				}
				text, there := "", false
				if ok {
					text, there = m.e.Loader.Text(p)
				}
				if !there {
					return nil, raise("Error", "ENOENT: no such file")
				}
				v, err := m.parseJSON(text)
				if err != nil {
					return nil, notJSON(err, "SyntaxError")
				}
				if err := load(v, ""); err != nil {
					return nil, err
				}
			}
			return c, outer()
		},
		"validate": func(m *machine, args []any, at spot) (any, error) {
			if o, ok := first(args).(*object); ok && cellOf(o, "allowed") == "strict" {
				var strange func(o *object, prefix string) bool
				strange = func(o *object, prefix string) bool {
					for _, k := range o.keys {
						if slices.ContainsFunc(fields, func(f convictField) bool { return f.path == prefix+k }) {
							continue
						}
						below, ok := o.cells[k].v.(*object)
						if !ok || strings.Count(prefix, ".") > 20 || m.use(64*len(below.keys)) != nil || strange(below, prefix+k+".") {
							return true
						}
					}
					return false
				}
				if strange(root, "") {
					return nil, raise("Error", "a setting that is not declared in the schema")
				}
			}
			for _, f := range fields {
				v, there := find(f.path)
				if !there {
					continue
				}
				if same, ok := equals(v, cellOf(f.spec, "default"), true); ok && same && f.format == any(undefined) {
					continue
				}
				fit, err := m.convictFits(f, v, at)
				if err != nil {
					return nil, err
				}
				if !fit {
					return nil, raise("Error", f.path+": is not as its format says")
				}
			}
			return c, nil
		},
		"getProperties": func(*machine, []any, spot) (any, error) { return m.copied(root), nil },
		"getEnv":        func(*machine, []any, spot) (any, error) { return dontKnow("the environment of convict"), nil },
		"toString":      func(*machine, []any, spot) (any, error) { return dontKnow("a text of settings"), nil },
	}).class
	return c, nil
}

func cellOf(o *object, k string) any { v, _ := o.get(k); return v }

// copied is a value of its own: lists and objects are copied, each once, so that what holds
// itself does so in the copy.
func (m *machine) copied(v any) any { return m.copiedTo(v, map[any]any{}, 0) }

// copiedTo leaves what is too deep as it is.
func (m *machine) copiedTo(v any, made map[any]any, depth int) any {
	if depth > 60 {
		return v
	}
	switch v.(type) {
	case *object, *list:
		if w := made[v]; w != nil {
			return w
		}
	}
	switch x := v.(type) {
	case *object:
		if x.class != nil || m.use(64+64*len(x.keys)) != nil {
			return v
		}
		o := newObject()
		o.dict, o.holds, o.other = x.dict, x.holds, x.other
		made[v] = o
		for _, k := range x.keys {
			o.set(k, m.copiedTo(x.cells[k].v, made, depth+1))
		}
		return o
	case *list:
		if m.use(64+16*len(x.items)) != nil {
			return v
		}
		l := &list{}
		*l = *x
		l.items = nil
		made[v] = l
		for _, y := range x.items {
			l.items = append(l.items, m.copiedTo(y, made, depth+1))
		}
		return l
	}
	return v
}

// setPath sets what a dotted path names, and makes the objects on its way.
func setPath(o *object, p string, v any) {
	parts := strings.Split(p, ".")
	within(o, parts[:len(parts)-1]).set(parts[len(parts)-1], v)
}

// within is the object that a path leads to; those on its way are made where there are
// none.
func within(o *object, path []string) *object {
	for _, k := range path {
		below, ok := cellOf(o, k).(*object)
		if !ok {
			below = newObject()
			o.set(k, below)
		}
		o = below
	}
	return o
}

// convictCoerce is a text as the format of a setting takes it.
func convictCoerce(format, def any, t string) any {
	kind, _ := format.(string)
	switch f := format.(type) {
	case *opaque:
		kind = strings.ToLower(f.path)
	case undef:
		kind = typeName(def)
	}
	switch kind {
	case "port", "nat", "integer", "int":
		return parseInt(t, 10)
	case "port_or_windows_named_pipe":
		if n := parseInt(t, 10); !math.IsNaN(n) && strconv.Itoa(int(n)) == t {
			return n
		}
	case "number":
		return parseFloat(t)
	case "boolean":
		return strings.ToLower(t) != "false"
	case "array":
		l := &list{}
		for p := range strings.SplitSeq(t, ",") {
			l.items = append(l.items, p)
		}
		return l
	}
	return t
}

// convictFits tells whether a value is as the format of a setting says.
func (m *machine) convictFits(f convictField, v any, at spot) (bool, error) {
	n, isNumber := v.(float64)
	whole := isNumber && n == math.Trunc(n)
	kind, named := f.format.(string)
	switch x := f.format.(type) {
	case *list:
		return slices.ContainsFunc(x.items, func(y any) bool { same, ok := equals(y, v, true); return ok && same }), nil
	case *function:
		_, err := m.call(x, undefined, []any{v, f.spec}, nil, at)
		if t, ok := err.(*thrown); ok && t != nil {
			return false, nil
		}
		return err == nil, err
	case *opaque:
		kind, named = strings.ToLower(x.path), true
	case undef:
		kind, named = typeName(cellOf(f.spec, "default")), true
		if cellOf(f.spec, "default") == nil {
			return true, nil
		}
	}
	if !named {
		return false, giveUp("a format of convict")
	}
	switch kind {
	case "*", "":
		return true, nil
	case "port":
		return whole && n >= 0 && n <= 65535, nil
	case "port_or_windows_named_pipe":
		_, isText := v.(string)
		return isText || whole && n >= 0 && n <= 65535, nil
	case "nat":
		return whole && n >= 0, nil
	case "int", "integer":
		return whole, nil
	case "number":
		return isNumber && !math.IsNaN(n), nil
	case "string":
		_, ok := v.(string)
		return ok, nil
	case "boolean":
		_, ok := v.(bool)
		return ok, nil
	case "array":
		_, ok := v.(*list)
		return ok, nil
	case "object":
		_, ok := v.(*object)
		return ok, nil
	}
	return false, giveUp("the format %s of convict", kind)
}

// jsConf is what nconf holds: its stores, in the order in which they were added
// (nconf 0.13, "Hierarchical configuration": what was added first counts first).
type jsConf struct {
	names  []string
	stores map[string]*object
	open   map[string]bool // those that can be written to
}

// nconfCall is a method of nconf itself or of a provider that the program made.
func (m *machine) nconfCall(f *opaque, args []any, at spot) (any, bool, error) {
	of, name := f.path, ""
	if i := strings.LastIndexByte(f.path, '.'); i > 0 {
		of, name = f.path[:i], f.path[i+1:]
	}
	if of != "nconf" && of != "nconf.default" {
		return nil, false, nil
	}
	if m.nconf == nil {
		m.nconf = &jsConf{stores: map[string]*object{}, open: map[string]bool{}}
	}
	return m.nconfMethod(m.nconf, &opaque{path: of}, name, args, at)
}

// nconfProvider is what new nconf.Provider() gives.
func (m *machine) nconfProvider() *object {
	c := &jsConf{stores: map[string]*object{}, open: map[string]bool{}}
	o := newObject()
	methods := map[string]func(*machine, []any, spot) (any, error){}
	for name := range nconfMethods {
		methods[name] = func(m *machine, args []any, at spot) (any, error) {
			v, _, err := m.nconfMethod(c, o, name, args, at)
			return v, err
		}
	}
	o.class = jsMethods("Provider", methods).class
	return o
}

var nconfMethods = words("argv env file defaults overrides use add get any set required load save")

func (m *machine) nconfMethod(c *jsConf, self any, name string, args []any, at spot) (any, bool, error) {
	add := func(name string, o *object, open bool) {
		if c.stores[name] == nil {
			c.names = append(c.names, name)
		}
		c.stores[name], c.open[name] = o, open
	}
	options, _ := first(args).(*object)
	set := func(o *object, key, sep string, v any) {
		parts := strings.Split(key, sep)
		if sep == "" {
			parts = []string{key}
		}
		for _, p := range strings.Split(strings.Join(parts, ":"), ":") {
			if p == "__proto__" {
				return
			}
		}
		keys := strings.Split(strings.Join(parts, ":"), ":")
		for _, k := range keys[:len(keys)-1] {
			below, ok := cellOf(o, k).(*object)
			if !ok {
				below = newObject()
				o.set(k, below)
			}
			o = below
		}
		o.set(keys[len(keys)-1], v)
	}
	valued := func(t string) any {
		if v, err := m.parseJSON(t); err == nil {
			return v
		}
		if t == "undefined" {
			return undefined
		}
		return t
	}
	opt := func(k string) any {
		if options == nil {
			return undefined
		}
		return cellOf(options, k)
	}
	switch name {
	case "argv":
		o := newObject()
		for _, w := range m.words(2) {
			if _, ok := w.(string); !ok {
				return nil, true, undecided("the arguments of the command line")
			}
		}
		all := m.words(2)
		sep, _ := opt("separator").(string)
		for i := 0; i < len(all); i++ {
			key, ok := strings.CutPrefix(all[i].(string), "--")
			if !ok || key == "" {
				if strings.HasPrefix(all[i].(string), "-") {
					return nil, true, giveUp("short options of nconf")
				}
				continue
			}
			var v any = true
			if k, t, has := strings.Cut(key, "="); has {
				key, v = k, argvValue(t)
			} else if i+1 < len(all) && !strings.HasPrefix(all[i+1].(string), "-") {
				i++
				v = argvValue(all[i].(string))
			}
			if strings.Contains(key, ".") && options == nil {
				return nil, true, giveUp("dotted options of nconf")
			}
			set(o, key, sep, v)
		}
		if options != nil && sep == "" && opt("parseValues") == any(undefined) { // declared as those of yargs
			for _, k := range options.keys {
				spec, ok := options.cells[k].v.(*object)
				if !ok || cellOf(spec, "alias") != any(undefined) {
					return nil, true, giveUp("options of nconf")
				}
				if _, given := o.get(k); !given {
					if d := cellOf(spec, "default"); d != any(undefined) {
						set(o, k, sep, d)
					}
				}
			}
		}
		add("argv", o, false)
	case "env":
		o := newObject()
		sep, lower, parse := "", false, false
		var match *pattern
		var only []any
		switch x := first(args).(type) {
		case string:
			sep = x
		case *list:
			only = x.items
		case *pattern:
			return nil, true, giveUp("a separator of nconf")
		case *object:
			for _, k := range x.keys {
				switch v := x.cells[k].v; k {
				case "separator":
					t, ok := v.(string)
					if !ok {
						return nil, true, giveUp("a separator of nconf")
					}
					sep = t
				case "lowerCase":
					lower = v == true
				case "parseValues":
					parse = v == true
				case "match":
					match, _ = v.(*pattern)
				case "whitelist":
					if l, ok := v.(*list); ok {
						only = l.items
					}
				case "readOnly", "type", "logicalSeparator":
				default: // a prefix, too: it is not heeded by every version
					return nil, true, giveUp("options of nconf")
				}
			}
		}
		for _, k := range m.envKeys() {
			key, v := k, any(m.env.text(k))
			if lower {
				key = strings.ToLower(key)
			}
			if match != nil {
				re, _, err := match.compiled()
				if err != nil {
					return nil, true, err
				}
				if !re.MatchString(key) && !slices.Contains(only, any(key)) {
					continue
				}
			} else if len(only) > 0 && !slices.Contains(only, any(key)) {
				continue
			}
			if parse {
				v = valued(m.env.text(k))
			}
			set(o, key, sep, v)
		}
		add("env", o, false)
	case "file":
		key, from := "file", first(args)
		if options != nil {
			from = opt("file")
			if opt("format") != any(undefined) || opt("secure") != any(undefined) || opt("dir") != any(undefined) {
				return nil, true, giveUp("a file of nconf")
			}
		} else if len(args) > 1 {
			key, from = show(first(args)), args[1]
			if o, ok := from.(*object); ok {
				if cellOf(o, "format") != any(undefined) {
					return nil, true, giveUp("a file of nconf")
				}
				from = cellOf(o, "file")
			}
		} else if t, ok := from.(string); ok {
			key = t
		}
		o := newObject()
		p, ok := m.treePath(pathText(from))
		if _, isText := from.(string); !ok && !isText {
			return nil, true, undecided("which file is loaded")
		}
		if ok {
			if text, there := m.e.Loader.Text(p); there {
				v, err := m.parseJSON(text)
				if err != nil {
					return nil, true, notJSON(err, "Error")
				}
				if data, ok := v.(*object); ok {
					o = data
				}
			}
		}
		add(key, o, true)
	case "defaults", "overrides":
		switch {
		case options == nil:
			return nil, false, nil
		case opt("type") == "literal":
			options, _ = opt("store").(*object)
		}
		if options == nil {
			return nil, true, giveUp("settings of nconf")
		}
		m.asCopy(name, options, add)
	case "use", "add":
		kind, _ := first(args).(string)
		o, _ := at2(args, 1).(*object)
		if o != nil {
			if t, ok := cellOf(o, "type").(string); ok && t != kind {
				switch store, isObject := cellOf(o, "store").(*object); {
				case t == "literal" && isObject:
					m.asCopy(kind, store, add)
				case t == "memory":
					add(kind, newObject(), true)
				case t == "file":
					return m.nconfMethod(c, self, "file", []any{kind, o}, at)
				default:
					return nil, true, giveUp("a store of nconf")
				}
				return self, true, nil
			}
		}
		switch kind {
		case "memory":
			add(kind, newObject(), true)
		case "env", "argv":
			return m.nconfMethod(c, self, kind, args[1:], at)
		case "literal":
			if o != nil {
				if store, ok := cellOf(o, "store").(*object); ok {
					o = store
				}
				m.asCopy(kind, o, add)
			}
		default:
			return nil, true, giveUp("a store of nconf")
		}
	case "get":
		key, ok := first(args).(string)
		if !ok && len(args) > 0 {
			return nil, true, undecided("which setting is read")
		}
		v, err := c.get(m, key)
		return v, true, err
	case "any":
		keys := args
		if l, ok := first(args).(*list); ok {
			keys = l.items
		}
		for _, k := range keys {
			v, err := c.get(m, show(k))
			if err != nil {
				return nil, true, err
			}
			if yes, ok := truth(v, false); yes && ok {
				return v, true, nil
			}
		}
		return nil, true, nil
	case "required":
		l, ok := first(args).(*list)
		if !ok {
			return nil, true, undecided("which settings there must be")
		}
		for _, k := range l.items {
			v, err := c.get(m, show(k))
			if err != nil {
				return nil, true, err
			}
			if v == any(undefined) {
				return nil, true, raise("Error", "Missing required keys: "+show(k))
			}
		}
		return self, true, nil
	case "set":
		for _, n := range c.names {
			if c.open[n] {
				set(c.stores[n], show(first(args)), "", at2(args, 1))
				return true, true, nil
			}
		}
		return false, true, nil
	case "load", "save":
		return undefined, true, nil
	default:
		return nil, false, nil
	}
	return self, true, nil
}

func (m *machine) asCopy(name string, o *object, add func(string, *object, bool)) {
	if c, ok := m.copied(o).(*object); ok {
		add(name, c, false)
	}
}

// get is a setting by its path; objects of several stores are one.
func (c *jsConf) get(m *machine, key string) (any, error) {
	var merged *object
	for _, n := range c.names {
		var v any = c.stores[n]
		if key != "" {
			for k := range strings.SplitSeq(key, ":") {
				o, ok := v.(*object)
				if !ok {
					v = undefined
					break
				}
				v = cellOf(o, k)
			}
		}
		if v == any(undefined) {
			continue
		}
		o, ok := v.(*object)
		if !ok {
			if !known(v) {
				return nil, undecided("what a setting is")
			}
			if merged != nil {
				continue
			}
			return v, nil
		}
		if merged == nil {
			merged = newObject()
		}
		m.underlay(merged, o, 0)
	}
	if merged != nil {
		return merged, nil
	}
	return undefined, nil
}

// underlay puts into an object what it does not have yet.
func (m *machine) underlay(o, from *object, depth int) {
	if depth > 20 || m.use(64*len(from.keys)) != nil {
		return
	}
	for _, k := range from.keys {
		have, there := o.get(k)
		if !there {
			o.set(k, m.copied(from.cells[k].v))
			continue
		}
		a, ok := have.(*object)
		if b, same := from.cells[k].v.(*object); ok && same {
			m.underlay(a, b, depth+1)
		}
	}
}

// argvValue is an argument as yargs takes it where nothing was declared: numbers
// are numbers.
func argvValue(t string) any {
	if n, err := strconv.ParseFloat(t, 64); err == nil && t != "" && !(len(t) > 1 && t[0] == '0' && t[1] != '.') {
		return n
	}
	switch t {
	case "true":
		return true
	case "false":
		return false
	}
	return t
}
