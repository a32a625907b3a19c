package value

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// schema reads the libraries that declare variables in one object: envalid's
// cleanEnv, zod's object().parse and convict (documentation of envalid 8, zod
// 4 and convict 6).
func (e *Eval) schema(fn *Value, args []*Value, s *code.Scope, at place.Span) *Value {
	switch {
	case fn.Text == "envalid.cleanEnv" && len(args) > 1 && args[1].Kind == Object:
		o := &Value{Kind: Object, At: at}
		for i, k := range args[1].Keys {
			spec := args[1].Kids[i]
			v := &Value{Kind: Env, Text: k, Unset: Raises, At: spec.At}
			r := v
			switch {
			case strings.HasPrefix(spec.Text, "envalid.port"):
				r = op("port", false, spec.At, r)
			case strings.HasPrefix(spec.Text, "envalid.num"):
				r = op("strict", false, spec.At, r)
			case strings.HasPrefix(spec.Text, "envalid.bool"):
				r = op("truthy", false, spec.At, r)
			case strings.HasPrefix(spec.Text, "envalid.makeValidator()"): // of one's own
				for made := spec; made != nil; made = made.Recv {
					if made.Text == "envalid.makeValidator()" && len(made.Kids) > 0 {
						r = e.converted(made.Kids[0], r, spec.At)
					}
				}
			}
			if list := option(spec, "choices"); list != nil && list.Kind == List {
				r = &Value{Kind: Cond, At: spec.At, Kids: []*Value{op("in", false, spec.At, r, list), r, {Kind: Env, Text: "\x00", Unset: Raises, At: spec.At}}}
			}
			d, dev := option(spec, "default"), option(spec, "devDefault")
			if dev != nil { // where NODE_ENV is set to something else than production
				if d == nil {
					d = v
				}
				mode := &Value{Kind: Env, Text: "NODE_ENV", Unset: ReadsUndef, At: spec.At}
				live := op("===", false, spec.At, mode, text("production", spec.At))
				d = &Value{Kind: Cond, At: spec.At, Kids: []*Value{op("||", false, spec.At, op("!", false, spec.At, mode), live), d, dev}}
			}
			if d != nil { // which is taken as it is
				isset := op("isset", false, spec.At, &Value{Kind: Env, Text: k, At: spec.At})
				r = &Value{Kind: Cond, At: spec.At, Kids: []*Value{isset, r, d}}
			}
			o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, r)
		}
		mode := &Value{Kind: Env, Text: "NODE_ENV", Unset: ReadsUndef, At: at}
		if v := o.Get("NODE_ENV"); v != nil {
			mode = v
		}
		is := func(name string) *Value { return op("===", false, at, mode, text(name, at)) }
		production := op("||", false, at, op("!", false, at, mode), is("production"))
		o.Keys = append(o.Keys, "isProduction", "isProd", "isDev", "isDevelopment", "isTest")
		o.Kids = append(o.Kids, production, production, is("development"), is("development"), is("test"))
		return o
	case (strings.HasSuffix(fn.Text, ".parse") || strings.HasSuffix(fn.Text, ".safeParse")) && len(args) == 1 && args[0].Kind == EnvMap:
		shape := shapeOf(fn)
		if shape == nil {
			return nil
		}
		o := &Value{Kind: Object, At: at}
		for i, k := range shape.Keys {
			o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, e.zodField(k, shape.Kids[i]))
		}
		if strings.HasSuffix(fn.Text, ".safeParse") {
			ok := fits(o, at)
			return &Value{Kind: Object, At: at, Keys: []string{"success", "data", "error"}, Kids: []*Value{ok, o, failure(ok, at)}}
		}
		return o
	case fn.Text == "@t3-oss/env-core.createEnv" && len(args) == 1 || fn.Text == "@t3-oss/env-nextjs.createEnv" && len(args) == 1:
		return e.t3(args[0], at)
	case strings.HasPrefix(fn.Text, "nconf.") && strings.HasSuffix(fn.Text, "get") && len(args) == 1 && args[0].Kind == Str:
		return e.nconf(args[0].Text, at)
	case (fn.Text == "joi.attempt" || fn.Text == "joi.assert") && len(args) > 1:
		return joi(args[1], args[0], true, at)
	case strings.HasPrefix(fn.Text, "joi.") && (strings.HasSuffix(fn.Text, ".validate") || strings.HasSuffix(fn.Text, ".validateAsync")) && len(args) > 0:
		return joi(fn, args[0], strings.HasSuffix(fn.Text, "Async"), at)
	case fn.Text == "convict" && len(args) == 1 && args[0].Kind == Object:
		return &Value{Kind: External, Text: "convict()", Kids: args, At: at}
	case strings.HasPrefix(fn.Text, "convict().") && strings.HasSuffix(fn.Text, ".get") && len(args) == 1 && args[0].Kind == Str:
		made := fn.Recv
		for made != nil && made.Text != "convict()" { // what loads and validates gives itself
			made = made.Recv
		}
		if made == nil || len(made.Kids) != 1 {
			return nil
		}
		v := made.Kids[0]
		for p := range strings.SplitSeq(args[0].Text, ".") {
			if v = v.Get(p); v == nil {
				return nil
			}
		}
		name, def := v.Get("env"), v.Get("default")
		def = e.convictFile(args[0].Text, def)
		if name == nil || name.Kind != Str {
			return def
		}
		r := &Value{Kind: Env, Text: name.Text, At: v.At}
		if def != nil {
			r = op("unset", false, v.At, r, def)
		}
		if f := v.Get("format"); f != nil && f.Kind == Str {
			switch f.Text {
			case "port":
				r = op("port", false, v.At, r)
			case "int", "nat":
				r = op("strict", false, v.At, r)
			}
		}
		return r
	case strings.HasPrefix(fn.Text, "env-var.get()"), strings.HasPrefix(fn.Text, "env-var.from().get()"):
		return envVar(fn, args, at)
	case fn.Text == "config.get" && len(args) == 1 && args[0].Kind == Str:
		v := e.layered(args[0].Text, at)
		if v != nil && v.Kind == Cond && v.Kids[2].Kind == Undef { // what nothing says is an error
			none := &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
			v = &Value{Kind: Cond, At: at, Kids: []*Value{v.Kids[0], op("??", false, at, v.Kids[1], none), none}}
		}
		return v
	case strings.HasSuffix(fn.Text, ".get().get") || strings.HasSuffix(fn.Text, ".get().getOrThrow"):
		// The configuration of Nest: a variable by its name.
		if r := fn.Recv; r != nil && len(r.Kids) == 1 && strings.HasSuffix(r.Kids[0].Text, "@nestjs/config.ConfigService") && len(args) > 0 && args[0].Kind == Str {
			v := &Value{Kind: Env, Text: args[0].Text, Unset: ReadsUndef, At: at}
			if w := e.nestValidated(args[0].Text, at); w != nil { // it stands before the environment
				return w
			}
			if w := e.nestLoaded(args[0].Text, at); w != nil {
				if w.Kind == Object || strings.Contains(args[0].Text, ".") { // no variable is an object, or is called so
					return w
				}
				v = op("??", false, at, v, w)
			}
			switch {
			case len(args) > 1 && args[1].Kind != Object: // an object holds options: { infer: true }
				return op("??", false, at, v, args[1])
			case strings.HasSuffix(fn.Text, "OrThrow") && v.Kind == Env:
				v.Unset = Raises
			}
			return v
		}
	}
	return nil
}

// nestValidated is a variable as the schema or the function makes it that
// ConfigModule.forRoot validates the environment with (documentation of
// @nestjs/config 4, "Schema validation" and "Custom validate function"); nil where
// there is none, or it says nothing of the variable.
func (e *Eval) nestValidated(key string, at place.Span) *Value {
	for _, site := range e.calls("forRoot") {
		if !strings.Contains(e.Expr(site.Node.Kid(0), site.Scope).Text, "@nestjs/config.ConfigModule") {
			continue
		}
		args, _ := e.Arguments(site)
		if len(args) == 0 {
			continue
		}
		env := &Value{Kind: EnvMap, At: at}
		var made *Value
		if schema := args[0].Get("validationSchema"); schema != nil {
			if made = joi(schema, env, true, at); made == nil {
				return unknown("what ConfigModule validates with", at)
			}
		} else if fn := args[0].Get("validate"); fn != nil {
			if made = e.invoke(fn, []*Value{env}, nil, nil); made.Kind != Object {
				return unknown("what ConfigModule validates with", at)
			}
		}
		if made != nil {
			return made.Get(key)
		}
	}
	return nil
}

// nestLoaded is a setting by its dotted name from the functions that
// ConfigModule.forRoot loads; registerAs puts its own under a name
// (documentation of @nestjs/config 4, "Custom configuration files" and
// "Configuration namespaces"). The environment counts before them. nil where
// none is loaded.
func (e *Eval) nestLoaded(key string, at place.Span) *Value {
	for _, name := range []string{"forRoot", "forFeature"} {
		for _, site := range e.calls(name) {
			callee := e.Expr(site.Node.Kid(0), site.Scope)
			if !strings.Contains(callee.Text, "@nestjs/config.ConfigModule") {
				continue
			}
			args, _ := e.Arguments(site)
			if len(args) == 0 {
				continue
			}
			list := args
			if name == "forRoot" {
				loaded := args[0].Get("load")
				if loaded == nil {
					continue
				}
				if loaded.Kind != List {
					return unknown("what ConfigModule loads", at)
				}
				list = loaded.Kids
			}
			for _, f := range list {
				keys := strings.Split(key, ".")
				if f.Kind == External && strings.HasSuffix(f.Text, "@nestjs/config.registerAs()") && len(f.Kids) == 2 {
					if f.Kids[0].literal() != keys[0] {
						continue
					}
					keys, f = keys[1:], f.Kids[1]
				}
				if f.Kind != Func {
					return unknown("what ConfigModule loads", at)
				}
				v := e.invoke(f, nil, nil, nil)
				for _, k := range keys {
					if v.Kind == Object || v.Kind == Undef || v.Kind == Null {
						v = v.Get(k)
					} else {
						v = unknown("what ConfigModule loads", at)
					}
					if v == nil {
						break
					}
				}
				if v != nil {
					return v.with(Step{at, "reads " + key})
				}
			}
		}
	}
	return nil
}

// convictFile is a value of the files that convict loads, which count more than
// the default and less than the environment.
func (e *Eval) convictFile(key string, def *Value) *Value {
	if e.busy("convict") { // the name of a file is made of it, before the file is loaded
		return def
	}
	e.active["convict"] = true
	defer delete(e.active, "convict")
	for _, site := range e.calls("loadFile") {
		arg := e.Expr(site.Node.Kid(1), site.Scope)
		files := []*Value{arg}
		if arg.Kind == List {
			files = arg.Kids
		}
		for _, f := range files {
			before := def
			v := e.named(f, f.At, func(d *document.Node) *Value {
				if n := d.Get(strings.Split(key, ".")...); n != nil {
					return FromDocument(n).with(Step{n.At(), d.At().File})
				}
				if before == nil {
					return &Value{Kind: Undef, At: f.At}
				}
				return before
			})
			if v == nil {
				if _, ok := e.PathOf(f); ok { // there is no such file
					continue
				}
				return unknown("a file of settings that is named while the program runs", f.At)
			}
			def = v
		}
	}
	return def
}

// layered is a setting of the package config: default, the file of the
// environment, local, the variables that a file names (config 4, "Configuration
// Files").
func (e *Eval) layered(key string, at place.Span) *Value {
	keys := strings.Split(key, ".")
	if len(keys) > 12 {
		return unknown("settings nested too deep", at)
	}
	file := func(name string) *Value { return e.layer(name, keys) }
	v := file("default")
	subkeys := map[string]bool{}
	nest := func(w *Value) {
		if w != nil && w.Kind == Object {
			for _, k := range w.Keys {
				subkeys[k] = true
			}
		}
	}
	nest(v)
	mode := EnvOr("NODE_CONFIG_ENV", EnvOr("NODE_ENV", text("development", at), at), at)
	for _, env := range []string{"development", "test", "staging", "production"} {
		if w := file(env); w != nil {
			nest(w)
			other := v
			if other == nil {
				other = &Value{Kind: Undef, At: at}
			}
			v = &Value{Kind: Cond, At: at, Kids: []*Value{op("===", false, at, mode, text(env, at)), w, other}}
		}
	}
	if w := file("local"); w != nil {
		nest(w)
		v = w
	}
	name, number := file("custom-environment-variables"), false
	if name != nil && name.Kind == Object {
		if given := name.Get("__name"); given != nil {
			format := name.Get("__format")
			name, number = given, format != nil && format.Text == "number"
		} else {
			nest(name)
		}
	}
	if len(subkeys) > 0 { // an object: each of its settings from the layer that has it
		o := &Value{Kind: Object, At: at}
		for _, k := range slices.Sorted(maps.Keys(subkeys)) {
			o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, e.layered(key+"."+k, at))
		}
		return o
	}
	if v == nil && e.layer("default", nil) != nil && (name == nil || name.Kind != Str) { // nothing says it, and to ask for it is an error
		v = &Value{Kind: Undef, At: at}
	}
	if v != nil { // what a variable holds as JSON stands before the files
		set := &Value{Kind: Env, Text: "NODE_CONFIG", Unset: ReadsUndef, At: at}
		field := op("json", false, at, set)
		for _, k := range keys {
			field = op("jsonfield", false, at, field, text(k, at))
		}
		v = &Value{Kind: Cond, At: at, Steps: v.Steps, Kids: []*Value{set, op("??", false, at, field, v), v}}
	}
	if name != nil && name.Kind == Str { // an empty one counts as not set
		if v == nil {
			v = &Value{Kind: Undef, At: at}
		}
		set := &Value{Kind: Env, Text: name.Text, Unset: ReadsUndef, At: at}
		given := set
		if number {
			given = op("Number", false, at, set)
		}
		v = &Value{Kind: Cond, At: at, Kids: []*Value{set, given, v}}
	}
	return v
}

// layer is what one file of the package config says of a setting; nil where it
// says nothing.
func (e *Eval) layer(name string, keys []string) *Value {
	for _, end := range []string{".json", ".yaml", ".yml", ".json5", ".toml"} {
		if n := e.Loader.Data(joined2(e.Dir, "config/"+name+end)).Get(keys...); n != nil {
			return FromDocument(n).with(Step{n.At(), "config/" + name + end})
		}
	}
	for _, end := range []string{".js", ".cjs", ".mjs", ".ts"} {
		f := e.Loader.File(joined2(e.Dir, "config/"+name+end))
		if f == nil {
			continue
		}
		v := e.Whole(f)
		for _, k := range keys {
			v = v.Get(k)
		}
		return v
	}
	return nil
}

// Whole is what a module of JavaScript gives to whoever asks for all of it:
// module.exports, the default export, or an object of what it exports.
func (e *Eval) Whole(f *code.File) *Value {
	for _, name := range []string{"=", "default"} {
		if b := f.Exports[name]; b != nil {
			return e.exported(f, b)
		}
	}
	o := &Value{Kind: Object, At: place.Whole(f.Name)}
	for _, name := range slices.Sorted(maps.Keys(f.Exports)) {
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, e.exported(f, f.Exports[name]))
	}
	return o
}

// Configured is the object that a file of settings of a tool of JavaScript gives:
// as it is, out of a call that only says its type (defineConfig), or from a
// function that gets what the tool says of the run.
func (e *Eval) Configured(f *code.File, run *Value) *Value {
	v := e.Whole(f)
	for range 3 {
		switch {
		case v.Kind == External && strings.HasSuffix(v.Text, ".defineConfig()") && len(v.Kids) == 1:
			v = v.Kids[0]
		case v.Kind == Func:
			v = e.invoke(v, []*Value{run}, nil, nil)
		default:
			return v
		}
	}
	return v
}

// option gives a property of the last argument of a call that made a value.
func option(v *Value, name string) *Value {
	if v == nil || v.Kind != External || len(v.Kids) == 0 {
		return nil
	}
	return v.Kids[len(v.Kids)-1].Get(name)
}

// shapeOf walks back from schema.parse to the object given to z.object.
func shapeOf(fn *Value) *Value {
	for v := fn; v != nil; v = v.Recv {
		if strings.HasSuffix(v.Text, ".object()") && len(v.Kids) == 1 && v.Kids[0].Kind == Object {
			return v.Kids[0]
		}
	}
	return nil
}

// t3 gives the object of createEnv: schemas of zod over the environment, or over
// an object that names the variables (documentation of @t3-oss/env-core 0.13).
func (e *Eval) t3(options *Value, at place.Span) *Value {
	from := options.Get("runtimeEnv")
	if from == nil {
		from = options.Get("runtimeEnvStrict")
	}
	o := &Value{Kind: Object, At: at}
	for _, part := range []string{"shared", "client", "server"} {
		shape := options.Get(part)
		if shape == nil || shape.Kind != Object {
			continue
		}
		for i, name := range shape.Keys {
			v := e.zodField(name, shape.Kids[i])
			if given := from.Get(name); given != nil && given.Kind != Env {
				v = unknown("what runtimeEnv gives for "+name, at)
			} else if given != nil && given.Text != name {
				v = v.Substitute(map[string]*Value{name: given})
			}
			o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, v)
		}
	}
	if len(o.Keys) == 0 {
		return nil
	}
	return o
}

// nconf is a setting by its name, with colons between keys: what was asked
// first counts (documentation of nconf 0.13, "Hierarchical configuration").
func (e *Eval) nconf(key string, at place.Span) *Value {
	var layers []*Value
	keys := strings.Split(key, ":")
	in := func(v *Value) *Value {
		for _, k := range keys {
			v = v.Get(k)
		}
		return v
	}
	for _, f := range e.Loader.Loaded() {
		var chain func(n *code.Node, s *code.Scope)
		chain = func(n *code.Node, s *code.Scope) {
			callee := n.Kid(0)
			if !n.Is(code.Call) || !callee.Is(code.Member) {
				return
			}
			chain(callee.Kid(0), s) // what stands first in a chain was said first
			if e.Expr(callee, s).Text == "" || !strings.HasPrefix(e.Expr(callee, s).Text, "nconf.") {
				return
			}
			args, _ := e.args(n, s, nil)
			switch callee.Name {
			case "argv":
				if v := e.given([]string{"--" + key}); v != nil {
					layers = append(layers, v)
				}
			case "env":
				sep := ":"
				if len(args) > 0 {
					if args[0].Kind == Str {
						sep = args[0].Text
					} else if s := args[0].Get("separator"); s != nil {
						sep = s.literal()
					}
				}
				layers = append(layers, &Value{Kind: Env, Text: strings.ReplaceAll(key, ":", sep), Unset: ReadsUndef, At: f.At(n)})
			case "file":
				for _, a := range args {
					name := a
					if file := a.Get("file"); file != nil {
						name = file
					}
					if p, ok := e.pathOf(name, 0); ok {
						if d := e.Loader.Data(p); d != nil {
							layers = append(layers, in(FromDocument(d)))
						}
					}
				}
			case "defaults", "overrides":
				if len(args) == 1 {
					if callee.Name == "overrides" {
						layers = append([]*Value{in(args[0])}, layers...)
					} else {
						layers = append(layers, in(args[0]))
					}
				}
			}
		}
		inner := map[*code.Node]bool{}
		for _, site := range f.Calls {
			if callee := site.Node.Kid(0); callee.Is(code.Member) {
				inner[callee.Kid(0)] = true
			}
		}
		for _, site := range f.Calls {
			if !inner[site.Node] && nconfRoot(site.Node) {
				chain(site.Node, site.Scope)
			}
		}
	}
	var v *Value
	for i := len(layers) - 1; i >= 0; i-- {
		switch {
		case layers[i] == nil:
		case v == nil:
			v = layers[i]
		default:
			v = op("??", false, at, layers[i], v)
		}
	}
	if v == nil {
		return &Value{Kind: Undef, At: at}
	}
	return v
}

// nconfRoot tells chains of calls that fill nconf from those that read it.
func nconfRoot(n *code.Node) bool {
	for n.Is(code.Call) && n.Kid(0).Is(code.Member) {
		if n.Kids[0].Name == "get" || n.Kids[0].Name == "set" {
			return false
		}
		n = n.Kids[0].Kid(0)
	}
	return n.Is(code.Name) || n.Is(code.Call)
}

// joi gives what a schema of Joi makes of the environment: a key that is not
// required may be missing, and numbers are converted (documentation of joi 18,
// "any.default", "any.required", "number"). nil where there is no such schema.
func joi(schema, data *Value, raises bool, at place.Span) *Value {
	for schema != nil && (schema.Kind != External || len(schema.Kids) != 1 || schema.Kids[0].Kind != Object || schema.Text != "joi.object()" && !strings.HasSuffix(schema.Text, ".keys()")) {
		schema = schema.Recv
	}
	if schema == nil || !strings.HasPrefix(schema.Text, "joi.") || data.Kind != EnvMap && data.Kind != Object {
		return nil
	}
	o := &Value{Kind: Object, At: at}
	var raw []*Value
	for i, name := range schema.Kids[0].Keys {
		spec := schema.Kids[0].Kids[i]
		v := &Value{Kind: Env, Text: name, Unset: ReadsUndef, At: spec.At}
		if data.Kind == Object {
			if v = data.Get(name); v == nil {
				v = &Value{Kind: Undef, At: spec.At}
			}
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, joiField(spec, v))
		raw = append(raw, v)
	}
	if raises {
		return o
	}
	whole := fits(o, at)
	for i, k := range o.Kids { // what does not fit is given as it was
		o.Kids[i] = op("catch", false, at, k, raw[i])
	}
	return &Value{Kind: Object, At: at, Keys: []string{"value", "error"}, Kids: []*Value{o, failure(whole, at)}}
}

// joiField is what a schema of joi makes of a value, which raises where it does
// not fit (documentation of joi 17, "any", "number" and "string").
func joiField(spec, v *Value) *Value {
	at := spec.At
	numeric := strings.HasPrefix(spec.Text, "joi.number()")
	r := v
	var list []*Value // of what must hold
	if numeric {
		r = op("strict", false, at, v)
	}
	must := func(sign string, a, b *Value) { list = append(list, op(sign, false, at, a, b)) }
	none := &Value{Kind: Undef, At: at}
	there := op("!", false, at, op("nothing", false, at, v))
	filled := op("!==", false, at, v, text("", at))
	empty := strings.HasPrefix(spec.Text, "joi.string()") // which a text may not be
	var steps []*Value
	for x := spec; x != nil; x = x.Recv {
		if strings.HasSuffix(x.Text, "()") {
			steps = append(steps, x)
		}
	}
	for _, x := range slices.Backward(steps) {
		var arg *Value
		if len(x.Kids) > 0 {
			arg = x.Kids[0]
		}
		limit := r
		if !numeric {
			limit = op("length", false, at, r)
		}
		switch step := strings.TrimSuffix(Tail(x.Text, 1), "()"); {
		case step == "trim":
			r = op("strip", false, at, r)
		case step == "lowercase":
			r = op("lower", false, at, r)
		case step == "uppercase":
			r = op("upper", false, at, r)
		case step == "insensitive": // which values fit is not asked
			list = slices.DeleteFunc(list, func(t *Value) bool { return t.Text == "in" })
		case step == "required":
			none = &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
		case step == "port":
			must(">=", r, number(0, at))
			must("<=", r, number(65535, at))
			list = append(list, op("Number.isInteger", false, at, r))
		case step == "integer":
			list = append(list, op("Number.isInteger", false, at, r))
		case step == "positive":
			must(">", r, number(0, at))
		case step == "allow" || step == "valid" || step == "equal":
			given := x.Kids
			if len(given) == 1 && given[0].Kind == List {
				given = given[0].Kids
			}
			for _, k := range given {
				empty = empty && !(k.Kind == Str && k.Text == "")
			}
			if step != "allow" {
				list = append(list, op("in", false, at, r, &Value{Kind: List, At: at, Kids: given}))
			}
		case arg == nil:
		case step == "default":
			none = arg
		case step == "min":
			must(">=", limit, arg)
		case step == "max":
			must("<=", limit, arg)
		case step == "greater":
			must(">", r, arg)
		case step == "less":
			must("<", r, arg)
		case step == "empty" && arg.Kind == Str && arg.Text == "":
			there, empty = op("&&", false, at, there, filled), false
		}
	}
	if empty {
		list = append([]*Value{filled}, list...)
	}
	for _, t := range slices.Backward(list) {
		r = &Value{Kind: Cond, At: at, Kids: []*Value{t, r, {Kind: Env, Text: "\x00", Unset: Raises, At: at}}}
	}
	return &Value{Kind: Cond, At: at, Kids: []*Value{there, r, none}}
}

// fits holds where no value of an object raises.
func fits(o *Value, at place.Span) *Value {
	all := boolean(true, at)
	for _, k := range o.Kids {
		ok := op("catch", false, at, op("||", false, at, op("nothing", false, at, k), boolean(true, at)), boolean(false, at))
		all = op("&&", false, at, all, ok)
	}
	return all
}

// failure is an error where a test does not hold, and nothing where it does.
func failure(holds *Value, at place.Span) *Value {
	return &Value{Kind: Cond, At: at, Kids: []*Value{holds, {Kind: Undef, At: at}, {Kind: External, Text: anError, At: at}}}
}

// zodField is what a schema of zod makes of a variable (documentation of zod 4,
// "Defining schemas"): what does not fit ends the program, unless it is caught.
func (e *Eval) zodField(name string, spec *Value) *Value {
	v := &Value{Kind: Env, Text: name, Unset: Raises, At: spec.At}
	return e.zod(spec, v, v)
}

// zod is what the steps of a schema make of a value, of the variable v.
func (e *Eval) zod(spec, v, r *Value) *Value {
	var steps []*Value
	for x := spec; x != nil; x = x.Recv {
		if x.Kind == External && strings.HasSuffix(x.Text, "()") {
			steps = append(steps, x)
		}
	}
	at := spec.At
	arg := func(x *Value, i int) *Value {
		if i < len(x.Kids) {
			return x.Kids[i]
		}
		return unknown("a missing argument", at)
	}
	var tests []*Value // that hold for what fits
	settle := func() {
		for _, t := range tests {
			r = &Value{Kind: Cond, At: at, Kids: []*Value{t, r, {Kind: Env, Text: "\x00", Unset: Raises, At: at}}}
		}
		tests = nil
	}
	isset := op("isset", false, at, &Value{Kind: Env, Text: v.Text, At: at})
	if r != v { // what came before decides
		isset = op("!==", false, spec.At, r, &Value{Kind: Undef, At: spec.At})
	}
	numeric := false
	for _, x := range slices.Backward(steps) {
		is := func(sign string, n *Value) {
			of := r
			if !numeric {
				of = op("length", false, at, r)
			}
			tests = append(tests, op(sign, false, at, of, n))
		}
		switch step := strings.TrimSuffix(Tail(x.Text, 1), "()"); step {
		case "number", "int", "float32", "float64", "int32":
			if numeric { // of a number: .int()
				tests = append(tests, op("Number.isInteger", false, at, r))
				continue
			}
			numeric = true
			if strings.Contains(x.Text, "coerce.") {
				r = op("strict", false, at, op("Number", false, at, r))
			} else {
				tests = append(tests, op("isnumber", false, at, r))
			}
		case "stringbool":
			r = op("truthy", true, at, r)
		case "boolean":
			if strings.Contains(x.Text, "coerce.") {
				r = op("Boolean", false, at, r)
			}
		case "enum", "nativeEnum":
			if list := arg(x, 0); list.Kind == List {
				tests = append(tests, op("in", false, at, r, list))
			}
		case "literal":
			tests = append(tests, op("===", false, at, r, arg(x, 0)))
		case "preprocess":
			if r == v {
				r = &Value{Kind: Env, Text: v.Text, Unset: ReadsUndef, At: v.At}
			}
			r = e.zod(arg(x, 1), v, e.converted(arg(x, 0), r, at))
		case "min", "gte":
			is(">=", arg(x, 0))
		case "max", "lte":
			is("<=", arg(x, 0))
		case "gt":
			is(">", arg(x, 0))
		case "lt":
			is("<", arg(x, 0))
		case "positive":
			is(">", number(0, at))
		case "nonnegative":
			is(">=", number(0, at))
		case "nonempty":
			is(">=", number(1, at))
		case "refine":
			tests = append(tests, e.converted(arg(x, 0), r, at))
		case "trim":
			r = op("strip", false, at, r)
		case "toLowerCase":
			r = op("lower", false, at, r)
		case "transform":
			settle()
			r = e.converted(arg(x, 0), r, at)
			numeric = true
		case "pipe":
			settle()
			r = e.zod(arg(x, 0), v, r)
		case "default", "prefault":
			settle()
			d := arg(x, 0)
			if d.Kind == Func {
				d = e.invoke(d, nil, nil, nil)
			}
			r = &Value{Kind: Cond, At: at, Kids: []*Value{isset, r, d}}
		case "optional", "nullish":
			settle()
			r = &Value{Kind: Cond, At: at, Kids: []*Value{isset, r, {Kind: Undef, At: at}}}
		case "catch":
			settle()
			r = op("catch", false, at, r, arg(x, 0))
		}
	}
	settle()
	return r
}

// converted is what a function makes of a value: one of the tree or one of the
// language.
func (e *Eval) converted(fn, v *Value, at place.Span) *Value {
	switch {
	case fn.Kind == Func:
		return e.invoke(fn, []*Value{v}, nil, nil)
	case fn.Kind == External && conversions[fn.Text] != "":
		return op(conversions[fn.Text], false, at, v)
	}
	return unknown("what a schema makes of its value", at)
}

// envVar reads the chain env.get('X').default(1).asPortNumber().
func envVar(fn *Value, args []*Value, at place.Span) *Value {
	if !strings.Contains(fn.Text, ".as") {
		return nil
	}
	var name, def *Value
	required := false
	for v := fn; v != nil; v = v.Recv {
		switch {
		case v.Text == "env-var.from()" && (len(v.Kids) == 0 || v.Kids[0].Kind != EnvMap):
			return nil
		case (v.Text == "env-var.get()" || v.Text == "env-var.from().get()") && len(v.Kids) > 0:
			name = v.Kids[0]
		case strings.HasSuffix(v.Text, ".default()") && len(v.Kids) == 1:
			def = v.Kids[0]
		case strings.HasSuffix(v.Text, ".required()"):
			required = true
		}
	}
	if name == nil || name.Kind != Str {
		return nil
	}
	v := &Value{Kind: Env, Text: name.Text, At: at}
	if required {
		v.Unset = Raises
	}
	r := v
	if def != nil {
		r = op("unset", false, at, v, def)
	}
	switch {
	case strings.HasSuffix(fn.Text, "asPortNumber"):
		r = op("port", false, at, r)
	case strings.HasSuffix(fn.Text, "asInt"):
		r = op("strict", false, at, r)
	}
	return r
}
