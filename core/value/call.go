package value

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// conversions are functions of the languages that turn one value into
// another, by the operation that says what they give.
var conversions = map[string]string{
	"Number": "Number", "parseInt": "parseInt", "Number.parseInt": "parseInt", "parseFloat": "Number", "Number.parseFloat": "Number",
	"String": "String", "Boolean": "Boolean", "isNaN": "isNaN", "Number.isNaN": "Number.isNaN", "Number.isInteger": "Number.isInteger",
	"Number.isFinite": "Number.isFinite", "isFinite": "Number.isFinite", "JSON.parse": "json",
	"strconv.Itoa": "String", "strconv.FormatInt": "String", "uint16": "int", "int64": "int", "uint": "int", "uint64": "int", "int32": "int", "string": "String", "strconv.ParseBool": "truthy",
	"int": "int", "float": "float", "str": "String", "bool": "Boolean", "len": "length",
	"distutils.util.strtobool": "truthy", "json.loads": "json",
	"Math.floor": "parseInt", "Math.trunc": "parseInt", "Math.round": "parseInt", "Math.abs": "Number",
}

// methods are methods of texts and lists, by the operation.
var methods = map[string]string{
	"strip": "strip", "trim": "strip", "lstrip": "strip", "rstrip": "strip", "lower": "lower", "toLowerCase": "lower", "casefold": "lower",
	"upper": "upper", "toUpperCase": "upper", "title": "title", "capitalize": "title", "split": "split", "partition": "partition", "rpartition": "rpartition", "toString": "String", "isdigit": "digits", "isnumeric": "digits", "isdecimal": "digits",
	"startswith": "startswith", "startsWith": "startswith",
}

// readers are functions that read a variable: the first argument is its name,
// the second (or the keyword default) its fallback. Facts from the
// documentation of Python's os, python-decouple, django-environ, environs,
// Deno and Starlette.
var readers = map[string]struct {
	unset Unset
	conv  string
}{
	"os.Getenv":                             {ReadsEmpty, ""},
	"os.LookupEnv":                          {ReadsEmpty, ""},
	"syscall.Getenv":                        {ReadsEmpty, ""},
	"os.getenv":                             {ReadsNull, ""},
	"os.environ.get":                        {ReadsNull, ""},
	"os.environ.pop":                        {ReadsNull, ""},
	"Deno.env.get":                          {ReadsUndef, ""},
	"decouple.config":                       {Raises, ""},
	"decouple.AutoConfig()()":               {Raises, ""},
	"starlette.config.Config()()":           {Raises, ""},
	"environ.Env()()":                       {Raises, ""},
	"environ.Env().str":                     {Raises, ""},
	"environ.Env().db":                      {Raises, "list"},
	"environ.Env().db_url":                  {Raises, "list"},
	"environ.Env().cache":                   {Raises, "list"},
	"environ.Env().cache_url":               {Raises, "list"},
	"environ.Env().email":                   {Raises, "list"},
	"environ.Env().email_url":               {Raises, "list"},
	"environ.Env().search_url":              {Raises, "list"},
	"environ.Env().channels_url":            {Raises, "list"},
	"environ.Env().int":                     {Raises, "int"},
	"environ.Env().bool":                    {Raises, "truthy"},
	"environ.Env().list":                    {Raises, "list"},
	"environs.Env()()":                      {Raises, ""},
	"environs.Env().str":                    {Raises, ""},
	"environs.Env().int":                    {Raises, "int"},
	"environs.Env().bool":                   {Raises, "truthy"},
	"environs.Env().list":                   {Raises, "list"},
	"environs.env.str":                      {Raises, ""},
	"environs.env.int":                      {Raises, "int"},
	"environs.env.bool":                     {Raises, "truthy"},
	"environs.env.list":                     {Raises, "list"},
	"django.core.management.utils.getenv()": {ReadsNull, ""},
}

// casts are the functions given as cast= to settings libraries.
var casts = map[string]string{"int": "int", "bool": "truthy", "float": "float", "str": "String", "decouple.Csv()": "list"}

// Reads reports whether an External path is a function that reads a variable.
func Reads(path string) bool { _, ok := readers[path]; return ok }

func (e *Eval) args(n *code.Node, s *code.Scope, c *context) (list []*Value, keys map[string]*Value) {
	keys = map[string]*Value{}
	for _, a := range n.Args() {
		switch {
		case a.Is(code.Keyword):
			keys[a.Name] = e.expr(a.Kid(0), s, c)
		case a.Is(code.Spread) && a.Name == "**":
			o := e.expr(a.Kid(0), s, c)
			switch names, ok := o.anyKeys(0); {
			case o.Kind == Object:
				for _, k := range o.Keys {
					keys[k] = o.Get(k)
				}
			case ok && len(names) > 0: // one of several maps
				for _, k := range names {
					keys[k] = o.underKey(k)
				}
			default:
				keys["**"] = o
			}
		case a.Is(code.Spread):
			if o := e.expr(a.Kid(0), s, c); o.Kind == List {
				list = append(list, o.Kids...)
			} else if o.Kind == Cond && s.File.Lang == code.Go {
				list = append(list, op(spreadList, false, o.At, o))
			} else if o.Kind == Object && s.File.Lang == code.PHP { // by their names
				for _, k := range o.Keys {
					keys[k] = o.Get(k)
				}
			} else {
				list = append(list, unknown("arguments that are spread", s.File.At(a)))
			}
		default:
			list = append(list, e.expr(a, s, c))
		}
	}
	return list, keys
}

// anyKeys are the names that the maps have between which conditions choose; ok is
// false where one of them is not known. What ends the program has none.
func (v *Value) anyKeys(depth int) (names []string, ok bool) {
	switch {
	case v.Kind == Object:
		return v.Keys, !slices.Contains(v.Keys, "...")
	case v.ends():
		return nil, true
	case v.Kind == Cond && len(v.Kids) == 3 && depth < 8:
		a, ok1 := v.Kids[1].anyKeys(depth + 1)
		b, ok2 := v.Kids[2].anyKeys(depth + 1)
		names = slices.Clone(a)
		for _, k := range b {
			if !slices.Contains(names, k) {
				names = append(names, k)
			}
		}
		return names, ok1 && ok2
	}
	return nil, false
}

// underKey is what the one that is chosen of these maps has under a name.
func (v *Value) underKey(k string) *Value {
	switch v.Kind {
	case Object:
		return v.held(k, &Value{Kind: Undef, Text: absent, At: v.At})
	case Cond:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].underKey(k), v.Kids[2].underKey(k)}
		return &w
	}
	return v
}

// ends reports whether a value stands for the end of the program.
func (v *Value) ends() bool {
	if v.Kind == Op && v.Text == "unwrap" && len(v.Kids) == 1 {
		v = v.Kids[0]
	}
	return v.Kind == Env && v.Text == "\x00"
}

// Arguments evaluates the arguments of a call: by place and by keyword.
func (e *Eval) Arguments(site code.Site) ([]*Value, map[string]*Value) {
	return e.args(site.Node, site.Scope, e.turnOf(site.Scope))
}

// Callee evaluates what is called.
func (e *Eval) Callee(site code.Site) *Value {
	return e.called(site.Node.Kid(0), site.Scope, e.turnOf(site.Scope))
}

// called evaluates what is called.
func (e *Eval) called(n *code.Node, s *code.Scope, c *context) *Value {
	before := e.calling
	e.calling = n
	defer func() { e.calling = before }()
	return e.expr(n, s, c)
}

func (e *Eval) call(n *code.Node, s *code.Scope, c *context) *Value {
	f := s.File
	py := f.Lang == code.Python
	at := f.At(n)
	callee := n.Kid(0)
	if callee == nil {
		return unknown("an unread call", at)
	}
	if e.busy(n) {
		return unknown("a call that leads back to itself", at)
	}
	e.active[n] = true
	defer delete(e.active, n)

	if !py && callee.Is(code.Name) && (callee.Name == "require" || callee.Name == "import") && n.Kid(1).Is(code.String) {
		return e.required(n.Kids[1].Name, n, s)
	}
	if javascript(f.Lang) && callee.Is(code.Name) && (callee.Name == "require" || callee.Name == "import") && len(n.Kids) == 2 {
		if v := e.requiredBy(e.expr(n.Kids[1], s, c), n, s); v != nil {
			return v
		}
	}
	if v := e.envCall(n, s, c); v != nil {
		return v
	}
	if v := e.patternCall(n, s, c); v != nil {
		return v
	}
	if f.Lang == code.Go {
		if v := e.goCall(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.Ruby {
		if v := e.rubyCall(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.Elixir {
		if v := e.elixirCall(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.CSharp {
		if v := e.dotnetCall(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.Rust {
		if v := e.rustCall(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.PHP {
		if v := e.phpCall(n, s, c); v != nil {
			return v
		}
	}
	if jvm(f.Lang) {
		if v := e.jvmCall(n, s, c); v != nil {
			return v
		}
	}
	var cv *Value
	if f.Lang == code.PHP && callee.Is(code.Member) {
		cv = e.phpMethod(callee, s, c)
	}
	if cv == nil {
		cv = e.called(callee, s, c)
	}
	if cv.Kind == Func && members(f.Lang) {
		cv = overload(cv, len(n.Args()))
	}
	if cv.Kind == Instance && py && callee.Is(code.Name) && callee.Name == "cls" {
		class := *cv // a class method makes an object of its class
		class.Kind = Class
		cv = &class
	}
	switch cv.Kind {
	case External:
		args, keys := e.args(n, s, c)
		r, ok := readers[cv.Text]
		if !ok && strings.HasSuffix(cv.Text, "()") { // an object that is called
			r, ok = readers[cv.Text+"()"]
		}
		if ok {
			return e.read(r.unset, r.conv, args, keys, cv, s, at)
		}
		if len(args) > 0 && cv.Text == "len" && args[0].Kind == External && (args[0].Text == "sys.argv" || args[0].Text == "process.argv" || args[0].Text == "os.Args") {
			return e.argumentCount(at)
		}
		if cv.Text == "strconv.FormatInt" && len(args) == 2 && !(args[1].Kind == Num && args[1].Num == 10) {
			return unknown("a number as text", at)
		}
		if name, ok := conversions[cv.Text]; ok && len(args) > 0 && (name != "json" || e.openedData(args[0], at) == nil) {
			return op(name, py, at, args[:min(2, len(args))]...)
		}
		switch cv.Text {
		case "Deno.env.has":
			if len(args) == 1 && args[0].Kind == Str {
				return op("isset", false, at, &Value{Kind: Env, Text: args[0].Text, At: at})
			}
		case "Object.assign":
			o := &Value{Kind: Object, At: at}
			for _, a := range args {
				o.spread(a, py)
			}
			return o
		case "max", "min", "Math.max", "Math.min":
			if len(args) > 1 {
				return op(strings.TrimPrefix(cv.Text, "Math."), py, at, args...)
			}
		case "json.load", "yaml.safe_load", "yaml.load", "tomllib.load", "tomli.load", "toml.load", "JSON.parse", "json.loads", "tomllib.loads", "tomli.loads", "toml.loads",
			"js-yaml.load", "yaml.parse", "toml.parse", "smol-toml.parse", "@iarna/toml.parse", "ini.parse", "json5.parse", "yaml.full_load":
			if len(args) > 0 {
				if d := e.openedData(args[0], at); d != nil {
					return d
				}
			}
		case "util.parseArgs":
			if v := e.parseArgs(args, at); v != nil {
				return v
			}
		case "Set":
			if len(args) == 1 && args[0].Kind == List {
				return args[0]
			}
		case "importlib.import_module":
			if len(args) == 1 {
				if v := e.importedBy(args[0], s, at); v != nil {
					return v
				}
			}
		case "Map":
			if len(args) == 1 && args[0].Kind == List {
				o := &Value{Kind: Object, Text: "Map", At: at}
				for _, p := range args[0].Kids {
					if p.Kind != List || len(p.Kids) != 2 || p.Kids[0].Kind != Str {
						return unknown("a map whose keys are made while the program runs", at)
					}
					o.Keys, o.Kids = append(o.Keys, p.Kids[0].Text), append(o.Kids, p.Kids[1])
				}
				return o
			}
		case "Object.freeze", "structuredClone":
			if len(args) > 0 && args[0].Kind == Object {
				return args[0]
			}
		case "dict", "types.SimpleNamespace", "argparse.Namespace":
			o := &Value{Kind: Object, At: at}
			for _, a := range args {
				o.spread(a, true)
			}
			for _, k := range slices.Sorted(maps.Keys(keys)) {
				o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, keys[k])
			}
			return o
		case "vars":
			if len(args) == 1 && args[0].Kind == External && parsers[args[0].Text] {
				return e.allArguments(args[0], at)
			}
		case "next":
			if n.Kid(1).Is(code.Comp) {
				if v := e.firstOf(n, args, s, c); v != nil {
					return v
				}
			}
		case "collections.namedtuple()":
			if o := tuple(cv, args, keys, at); o != nil {
				return o
			}
		case "Object.entries", "Object.keys", "Object.values", "Object.fromEntries":
			if v := entries(cv.Text, args, at); v != nil {
				return v
			}
		case "fs.existsSync", "os.path.exists", "os.path.isfile", "File.exist?", "existsSync":
			if len(args) == 1 {
				if p, ok := e.pathOf(args[0], 0); ok {
					return boolean(slices.Contains(e.Loader.Beside(dirOf(p)), p), at)
				}
			}
		case "collections.ChainMap": // the first that has it gives it
			o := &Value{Kind: Object, At: at}
			for _, a := range slices.Backward(args) {
				o.spread(a, true)
			}
			return o
		case "isinstance":
			if len(args) == 2 && (args[1].Text == "str" || args[1].Text == "int") {
				return op(map[string]string{"str": "istext", "int": "isnumber"}[args[1].Text], true, at, args[0])
			}
		case "list", "tuple", "set":
			if len(args) == 1 {
				return args[0]
			}
		case "getattr":
			if len(args) > 1 && args[1].Kind == Str {
				return e.key(args[0], args[1].Text, s, c, at)
			}
		}
		if list := e.argumentList(cv.Recv, at); list != nil && callee.Is(code.Member) {
			if v := e.listMethod(list, callee.Name, args, c, py, at); v != nil {
				return v
			}
		}
		if v := e.store(cv, args); v != nil {
			return v
		}
		if v := e.schema(cv, args, s, at); v != nil {
			return v
		}
		keyed := &Value{Kind: External, Text: cv.Text + "()", At: at, Recv: cv, Kids: args, Steps: cv.Steps}
		for _, k := range n.Args() {
			if k.Is(code.Keyword) {
				keyed.Keys = append(keyed.Keys, k.Name)
				keyed.ref = &ref{keys: keys}
			}
		}
		return keyed
	case Func:
		args, keys := e.args(n, s, c)
		v := e.invoke(cv, args, keys, c)
		name := cv.Text
		if name == "" { // a function that only its binding names
			name = callee.Dotted()
		}
		return v.with(Step{at, "calls " + name})
	case Class:
		args, keys := e.args(n, s, c)
		if py && len(args) == 1 && e.enumeration(cv) { // the member of that value
			return args[0]
		}
		r := *cv.ref
		r.args, r.keys = args, keys
		if n.Is(code.New) {
			r.own = n.Alias
		}
		return &Value{Kind: Instance, Text: cv.Text, At: at, ref: &r, Steps: cv.Steps}
	case Cond:
		if functions(cv, 0) { // a method of one of several objects
			args, keys := e.args(n, s, c)
			return e.each(cv, args, keys, c).with(Step{at, "calls " + callee.Dotted()})
		}
	}
	if callee.Is(code.Member) {
		return e.method(n, callee, s, c)
	}
	return unknown("what "+f.Text(callee)+" returns", at)
}

// functions reports whether a condition chooses between functions of the tree,
// or one and nothing.
func functions(v *Value, depth int) bool {
	some, ok := v.choice(depth)
	return some && ok
}

func (v *Value) choice(depth int) (some, ok bool) {
	switch {
	case v.Kind == Cond && depth < 6:
		a, ok1 := v.Kids[1].choice(depth + 1)
		b, ok2 := v.Kids[2].choice(depth + 1)
		return a || b, ok1 && ok2
	case v.Kind == Undef || v.Kind == Null:
		return false, depth > 0
	}
	return true, v.Kind == Func && v.ref != nil && depth > 0
}

// each calls the functions that a condition chooses between.
func (e *Eval) each(v *Value, args []*Value, keys map[string]*Value, c *context) *Value {
	if v.Kind == Undef || v.Kind == Null { // a method of nothing
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: v.At}
	}
	if v.Kind == Cond {
		return &Value{Kind: Cond, Py: v.Py, At: v.At, Steps: v.Steps, Kids: []*Value{v.Kids[0], e.each(v.Kids[1], args, keys, c), e.each(v.Kids[2], args, keys, c)}}
	}
	return e.invoke(v, args, keys, c)
}

// overload picks the method of that name that takes so many arguments.
func overload(fn *Value, args int) *Value {
	r := fn.ref
	if r.scope == nil || r.scope.Class == nil || r.node.Kid(0) == nil || len(r.node.Kid(0).Kids) == args {
		return fn
	}
	for _, m := range r.scope.Class.Kid(1).Kids {
		if m.Is(code.Func) && m.Name == r.node.Name && len(m.Kid(0).Kids) == args {
			w, rr := *fn, *r
			rr.node = m
			w.ref = &rr
			return &w
		}
	}
	return fn
}

// envCall reads os.environ.get(name, default) and its like, whose receiver is
// the environment itself.
func (e *Eval) envCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	if !callee.Is(code.Member) {
		return nil
	}
	switch callee.Name {
	case "get", "setdefault", "pop", "__getitem__", "getint", "getboolean":
	default:
		return nil
	}
	if s.File.Lang == code.Python {
		if v := e.section(n, s, c); v != nil {
			return v
		}
	}
	base := callee.Kid(0)
	if base.Is(code.String) || base.Is(code.Call) {
		return nil
	}
	bv := e.expr(base, s, c)
	if bv.Kind == Cond && s.File.Lang == code.Python && callee.Name == "get" && bv.objects(0) && n.Kid(1) != nil {
		k, other := e.expr(n.Kids[1], s, c), &Value{Kind: Null, At: s.File.At(n)}
		if n.Kid(2) != nil {
			other = e.expr(n.Kid(2), s, c)
		}
		if k.Kind == Str {
			return bv.ofEach(func(o *Value) *Value { return o.held(k.Text, other) })
		}
	}
	switch bv.Kind {
	case EnvMap:
		args, keys := e.args(n, s, c)
		return e.read(ReadsNull, "", args, keys, bv, s, s.File.At(n))
	case Object: // a dictionary; in JavaScript get is a property like any other
		if arg := n.Kid(1); arg != nil && (s.File.Lang == code.Python || bv.Text == "Map") {
			k := e.expr(arg, s, c)
			if k.Kind == Str {
				other := &Value{Kind: Null, At: s.File.At(n)}
				if n.Kid(2) != nil {
					other = e.expr(n.Kid(2), s, c)
				}
				return bv.held(k.Text, other)
			}
			v := e.index(&code.Node{Kind: code.Index, Kids: []*code.Node{base, arg}, Off: n.Off, End: n.End}, s, c)
			if n.Kid(2) != nil && v.Kind == Cond {
				return op("??", true, v.At, v, e.expr(n.Kid(2), s, c))
			}
			return v
		}
	}
	return nil
}

// prefixed is what env.prefixed("X_") of environs puts before the names of
// variables that are read inside of it.
func prefixed(at place.Span, f *code.File) string {
	p, here := "", offset(f, at)
	f.Body.Walk(func(n *code.Node) bool {
		if n.Off > here || n.End < here {
			return n.End == 0
		}
		if c := n.Kid(0); n.Is(code.With) && c.Is(code.Call) && c.Kid(0).Is(code.Member) && c.Kids[0].Name == "prefixed" && c.Kid(1).Is(code.String) {
			p += c.Kids[1].Name
		}
		return true
	})
	return p
}

// scheme is the cast and the default that django-environ was given for a
// variable; nil for none.
func (e *Eval) scheme(fn *Value, name string) *Value {
	for v := fn; v != nil; v = v.Recv {
		if v.Text == "environ.Env()" && v.ref != nil {
			if p := v.ref.keys[name]; p != nil && p.Kind == List && len(p.Kids) == 2 {
				return p
			}
		}
	}
	return nil
}

// decoupled is what settings.ini or .env hold under a name, for
// python-decouple (its README, "Where is the settings data stored?").
func (e *Eval) decoupled(name string) *Value {
	for _, file := range []string{"settings.ini", ".env"} {
		d := e.Loader.Data(joined2(e.Dir, file))
		if file == "settings.ini" {
			d = d.Get("settings")
		}
		if n := d.Get(name); n != nil {
			return FromDocument(n).with(Step{n.At(), file})
		}
	}
	return nil
}

// urlNames are the variables of django-environ's addresses where none is named
// (django-environ 0.12, "Supported types").
var urlNames = map[string]string{"db": "DATABASE_URL", "db_url": "DATABASE_URL", "cache": "CACHE_URL", "cache_url": "CACHE_URL", "email": "EMAIL_URL", "email_url": "EMAIL_URL", "search_url": "SEARCH_URL", "channels_url": "CHANNELS_URL"}

// read makes the value of a function that reads a variable.
func (e *Eval) read(unset Unset, conv string, args []*Value, keys map[string]*Value, fn *Value, s *code.Scope, at place.Span) *Value {
	if name := urlNames[strings.TrimPrefix(fn.Text, "environ.Env().")]; len(args) == 0 && name != "" {
		args = []*Value{text(name, at)}
	}
	if len(args) == 0 {
		return unknown("a variable without a name", at)
	}
	name := args[0].Under(Environ{})
	if name.Kind != Str {
		return unknown("a variable whose name is made while the program runs", at)
	}
	library, _, _ := strings.Cut(fn.Text, ".")
	if library == "environs" {
		name.Text = prefixed(at, s.File) + name.Text
	}
	v := &Value{Kind: Env, Text: name.Text, Unset: unset, At: at}
	def := keys["default"]
	if len(args) > 1 {
		def = args[1]
	}
	if library == "environ" {
		if scheme := e.scheme(fn, name.Text); scheme != nil { // Env(NAME=(cast, default))
			if c, ok := casts[scheme.Kids[0].Text]; ok && conv == "" {
				conv = c
			}
			if def == nil {
				def = scheme.Kids[1]
			}
		}
	}
	v = e.assigned(v)
	if library == "starlette" && len(fn.Kids) > 0 { // the file that it is given (Starlette 0.46, "Configuration")
		if o := fn.Kids[0].Under(Environ{}); o.Kind == Str {
			if n := e.Loader.Data(joined2(e.Dir, o.Text)).Get(name.Text); n != nil {
				def = FromDocument(n).with(Step{n.At(), o.Text})
			}
		}
	}
	if library == "decouple" { // the file beside the code stands before the default
		if file := e.decoupled(name.Text); file != nil {
			def = file
		}
	}
	r := v
	if def != nil {
		r = op("unset", s.File.Lang == code.Python, at, v, def)
	}
	if k := keys["cast"]; k != nil {
		if c, ok := casts[k.Text]; ok {
			conv = c
		} else if k.Kind == Func && conv == "" {
			return e.converted(k, r, at)
		} else if conv == "" {
			return op("loop", true, at, r)
		}
	}
	if conv != "" {
		r = op(conv, true, at, r)
	}
	return r
}

// required gives what require() or import() of a module gives.
func (e *Eval) required(module string, n *code.Node, s *code.Scope) *Value {
	at := s.File.At(n)
	path, ok := e.Loader.Resolve(s.File, module, "")
	if !ok {
		return &Value{Kind: External, Text: strings.TrimPrefix(module, "node:"), At: at}
	}
	step := Step{at, "imports " + path}
	if f := e.Loader.File(path); f != nil {
		if b, ok := f.Exports["="]; ok && n.Kids[0].Name == "require" {
			if v := e.exported(f, b); v != nil {
				// Properties added beside module.exports = f are kept with it.
				return v.with(step)
			}
		}
		return (&Value{Kind: Module, Text: path, At: at}).with(step)
	}
	if d := e.Loader.Data(path); d != nil {
		return FromDocument(d).with(step)
	}
	return unknown(module+" could not be read", at)
}

// method evaluates a method of a text, a list or an object of the tree.
func (e *Eval) method(n, callee *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	py := s.File.Lang == code.Python
	base := e.expr(callee.Kid(0), s, c)
	name := callee.Name
	if base.Kind == Object && py && len(n.Kids) == 1 {
		if f, ok := map[string]string{"items": "Object.entries", "keys": "Object.keys", "values": "Object.values"}[name]; ok {
			if v := entries(f, []*Value{base}, at); v != nil {
				return v
			}
		}
	}
	if name == "split" && base.Kind == Str && n.Kid(1).Is(code.String) && n.Kids[1].Name != "" && len(n.Kids) == 2 {
		list := &Value{Kind: List, At: at, Py: py}
		for part := range strings.SplitSeq(base.Text, n.Kids[1].Name) {
			list.Kids = append(list.Kids, text(part, at))
		}
		return list
	}
	if base.Kind == List {
		args, _ := e.args(n, s, c)
		if v := e.listMethod(base, name, args, c, py, at); v != nil {
			return v
		}
	}
	if s.File.Lang == code.Go && !literalKind(base) {
		if m := e.namedMethod(base, name); m != nil {
			args, keys := e.args(n, s, c)
			return e.invoke(m, args, keys, c)
		}
	}
	if o, ok := methods[name]; ok {
		args, _ := e.args(n, s, c)
		if name == "toString" {
			args = nil
		}
		return op(o, py, at, append([]*Value{base}, args[:min(1, len(args))]...)...)
	}
	if textMethods[name] != "" || name == "replace" {
		args, _ := e.args(n, s, c)
		if v := textCall(name, append([]*Value{base}, args...), s.File.Lang, at); v != nil {
			return v
		}
	}
	switch name {
	case "slice":
		if args, _ := e.args(n, s, c); len(args) == 1 && args[0].Kind == Num {
			if v := e.rest(base, int(args[0].Num), at); v != nil {
				return v
			}
			return op("from", py, at, base, args[0])
		}
	case "format":
		if args, keys := e.args(n, s, c); py && base.Kind == Str {
			return braces(base.Text, args, keys, at)
		}
		return &Value{Kind: Op, Text: "loop", Kids: []*Value{base}, At: at}
	case "join", "replace", "map", "filter", "concat", "reduce":
		args, _ := e.args(n, s, c)
		if name == "filter" && len(args) == 1 && args[0].Text == "Boolean" && base.Kind == List {
			return &Value{Kind: Op, Text: "kept", Kids: base.Kids, At: at}
		}
		return &Value{Kind: Op, Text: "loop", Kids: append([]*Value{base}, args...), At: at}
	case "bind":
		return base
	case "then":
		return unknown("the result of a promise", at)
	case "find":
		if args, _ := e.args(n, s, c); len(args) == 1 && args[0].Text == "Boolean" && base.Kind == List {
			v := &Value{Kind: Undef, At: at}
			for i := len(base.Kids) - 1; i >= 0; i-- {
				v = op("||", py, at, base.Kids[i], v)
			}
			return v
		}
	case "includes":
		args, _ := e.args(n, s, c)
		if len(args) == 1 {
			return op("in", py, at, args[0], base)
		}
	}
	if base.Kind == Instance || base.Kind == Class || base.Kind == Module || base.Kind == Object {
		return unknown("what "+s.File.Text(callee)+" returns", at)
	}
	return unknown("what "+name+" returns", at)
}

// invoke evaluates what a function of the tree returns for these arguments.
func (e *Eval) invoke(fn *Value, args []*Value, keys map[string]*Value, up *context) *Value {
	return e.result(0, fn, args, keys, up)
}

// result evaluates one of several results that a function returns, from 0.
func (e *Eval) result(which int, fn *Value, args []*Value, keys map[string]*Value, up *context) *Value {
	r := fn.ref
	inner := r.file.Funcs[r.node]
	if inner == nil || e.busy(r.node) {
		return unknown("what "+fn.Text+" returns", fn.At)
	}
	e.active[r.node] = true
	defer delete(e.active, r.node)
	if r.up != nil { // it sees what surrounds it, not what calls it
		up = r.up
	}
	ctx := &context{fn: r.node, args: args, keys: keys, this: r.this, up: up, result: which}
	body := r.node.Kid(1)
	if r.node.Flag&code.Arrow != 0 {
		return e.expr(body, inner, ctx)
	}
	if bodiless[r.file.Lang] && body.Is(code.Block) && body.End <= body.Off {
		return unknown("what "+fn.Text+" returns, which has no body here", fn.At)
	}
	if implicitly(r.file.Lang) && body.Is(code.Block) {
		if v := e.implicit(body.Kids, inner, ctx); v != nil {
			return v
		}
		return &Value{Kind: Null, At: fn.At}
	}
	v := e.body(body.Kids, inner, ctx)
	if v == nil {
		gives := false
		body.Walk(func(k *code.Node) bool {
			gives = gives || k.Name == code.Yield && (k.Is(code.Await) || k.Is(code.Unknown))
			return !gives && !k.Is(code.Func)
		})
		if gives {
			return unknown("what a generator gives", fn.At)
		}
		return &Value{Kind: Undef, At: fn.At}
	}
	return v
}

// javascript tells the languages of JavaScript.
func javascript(l code.Language) bool {
	return l == code.JavaScript || l == code.TypeScript || l == code.JSX
}

// bodiless are the languages in which a method may be declared without a body: of
// an interface, a trait or an abstract class.
var bodiless = map[code.Language]bool{code.Java: true, code.Kotlin: true, code.CSharp: true, code.PHP: true, code.Rust: true}

// implicitly tells languages in which a function returns what its last
// expression comes to.
func implicitly(l code.Language) bool {
	return l == code.Ruby || l == code.Rust || l == code.Elixir
}

// body gives what a list of statements returns; nil when it falls through.
func (e *Eval) body(list []*code.Node, s *code.Scope, c *context) *Value {
	return e.bodyThen(list, s, c, nil)
}

// once makes a function that works something out when it is first asked.
func once(f func() *Value) func() *Value {
	var v *Value
	done := false
	return func() *Value {
		if !done {
			done = true
			v = f()
		}
		return v
	}
}

// bodyThen gives what a list of statements returns, and after its end what
// follows it returns; nil where nothing does.
func (e *Eval) bodyThen(list []*code.Node, s *code.Scope, c *context, then func() *Value) *Value {
	py := s.File.Lang == code.Python
	for i, n := range list {
		rest := once(func() *Value { return e.bodyThen(list[i+1:], s, c, then) })
		switch n.Kind {
		case code.Return:
			if c != nil && c.result > 0 {
				if len(n.Kids) == 1 {
					return e.second(n.Kids[0], s, c)
				}
				return e.expr(n.Kid(c.result), s, c)
			}
			return e.expr(n.Kid(0), s, c)
		case code.Throw:
			return &Value{Kind: Env, Text: "\x00", Unset: Raises} // never set: raises
		case code.ExprStmt:
			if code.Ends(n) { // which nothing catches
				return op("unwrap", true, s.File.At(n), &Value{Kind: Env, Text: "\x00", Unset: Raises})
			}
		case code.Block, code.With:
			kids := n.Kids
			if n.Kind == code.With {
				kids = n.Kids[len(n.Kids)-1].Kids
			}
			if returns(n) {
				return e.bodyThen(kids, s, c, rest)
			}
		case code.If:
			if !returns(n.Kid(1)) && !returns(n.Kid(2)) {
				continue
			}
			yes, no := e.branch(n.Kid(1), s, c, rest), e.branch(n.Kid(2), s, c, rest)
			if yes == nil && no == nil {
				return nil
			}
			if yes == nil {
				yes = &Value{Kind: Undef}
			}
			if no == nil {
				no = &Value{Kind: Undef}
			}
			return &Value{Kind: Cond, Py: py, At: yes.At, Kids: []*Value{e.expr(n.Kid(0), s, c), yes, no}}
		case code.Try:
			if !returns(n.Kid(0)) {
				continue
			}
			v := e.bodyThen(n.Kid(0).Kids, s, c, rest)
			if v == nil {
				v = &Value{Kind: Undef}
			}
			var alt *Value
			if h := n.Kid(2); h != nil && h.Name == "catch" { // by the class of the error
				alt = unknown("which error it was", s.File.At(n))
			} else if h := n.Kid(1); h != nil {
				alt = e.bodyThen(h.Kids, s, c, rest)
			} else {
				alt = rest()
			}
			if alt == nil {
				alt = &Value{Kind: Undef}
			}
			return op("catch", py, v.At, v, alt)
		case code.Switch:
			if returns(n) {
				return e.switched(n, rest, s, c)
			}
		case code.Loop:
			if returned(n) {
				return e.turns(n, rest, s, c)
			}
		}
	}
	if then != nil {
		return then()
	}
	return nil
}

// returned reports whether a return stands in a statement.
func returned(n *code.Node) bool {
	found := false
	n.Walk(func(k *code.Node) bool {
		found = found || k.Is(code.Return)
		return !found && !k.Is(code.Func)
	})
	return found
}

// switched gives what a switch with returns in its cases comes to.
func (e *Eval) switched(n *code.Node, rest func() *Value, s *code.Scope, c *context) *Value {
	py := s.File.Lang == code.Python
	there := func(v *Value) *Value {
		if v == nil {
			return &Value{Kind: Undef}
		}
		return v
	}
	v := there(rest())
	for i := len(n.Kids) - 1; i > 0; i-- {
		k := n.Kids[i]
		w := there(e.branch(k.Kid(0), s, c, rest))
		test, not := code.CaseTest(n, k)
		if test == nil {
			v = w
			continue
		}
		t := e.expr(test, s, c)
		if not {
			t = op("!", py, t.At, t)
		}
		v = &Value{Kind: Cond, Py: py, At: w.At, Kids: []*Value{t, w, v}}
	}
	return v
}

func (e *Eval) branch(n *code.Node, s *code.Scope, c *context, then func() *Value) *Value {
	switch {
	case n == nil:
		return then()
	case n.Is(code.Block):
		return e.bodyThen(n.Kids, s, c, then)
	}
	return e.bodyThen([]*code.Node{n}, s, c, then)
}

// stores are settings that one call sets and another gives back: the object,
// the setter and the getter (Express application, section app.set).
var stores = []struct{ owner, set, get string }{
	{"express()", "set", "get"},
}

// store follows app.get('port') to app.set('port', x), and an application's
// configuration to where it is assigned.
func (e *Eval) store(callee *Value, args []*Value) *Value {
	if len(args) == 0 || args[0].Kind != Str {
		return nil
	}
	for _, st := range stores {
		if callee.Text != st.owner+"."+st.get || len(args) != 1 {
			continue
		}
		for _, f := range e.Loader.Loaded() {
			for _, site := range f.Calls {
				fn := site.Node.Kid(0)
				if !fn.Is(code.Member) || fn.Name != st.set || !site.Node.Kid(1).Is(code.String) || site.Node.Kids[1].Name != args[0].Text || site.Node.Kid(2) == nil {
					continue
				}
				v := e.expr(site.Node.Kids[2], site.Scope, nil)
				return v.with(Step{f.At(site.Node), f.Text(site.Node)})
			}
		}
	}
	if base, ok := strings.CutSuffix(callee.Text, ".config.get"); ok && base == "flask.Flask()" {
		v := e.Config(args[0].Text)
		switch {
		case len(args) < 2:
		case v == nil:
			v = args[1]
		case !v.given():
			v = op("??", true, v.At, v, args[1])
		}
		return v
	}
	return nil
}

// Config gives what a Flask application's configuration holds under a name:
// app.config["X"] = …, config.update(X=…), from_mapping(X=…), from_object.
func (e *Eval) Config(name string) *Value {
	var v *Value
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Python {
			continue
		}
		sites := slices.Concat(f.Sets, f.Calls)
		slices.SortStableFunc(sites, func(a, b code.Site) int { return int(a.Node.Off - b.Node.Off) })
		for _, site := range sites {
			if site.Node.Is(code.Index) && site.Node.Kid(1).Is(code.String) && site.Node.Kids[1].Name == name && site.Node.Kid(0).Is(code.Member) && site.Node.Kids[0].Name == "config" {
				if e.busy(site.Node) { // it is made of what was there before
					return v
				}
				e.active[site.Node] = true
				w := e.Expr(site.Value, site.Scope).with(Step{f.At(site.Node), f.Text(site.Node)})
				delete(e.active, site.Node)
				for i := len(site.Guards) - 1; i >= 0 && v != nil; i-- {
					w = e.guarded(site.Guards[i], w, v, nil)
				}
				v = w
			}
			fn := site.Node.Kid(0)
			if !fn.Is(code.Member) || !fn.Kid(0).Is(code.Member) || fn.Kids[0].Name != "config" {
				continue
			}
			switch fn.Name {
			case "update", "from_mapping":
				for _, a := range site.Node.Args() {
					if a.Is(code.Keyword) && a.Name == name {
						v = e.Expr(a.Kid(0), site.Scope).with(Step{f.At(a), f.Text(a)})
					}
					if a.Is(code.Object) {
						if w := e.Expr(a, site.Scope).Get(name); w != nil {
							v = w
						}
					}
				}
			case "from_prefixed_env":
				// FLASK_NAME, read as JSON where it is that (Flask API,
				// "Config.from_prefixed_env").
				prefix := "FLASK"
				if a := site.Node.Kid(1); a != nil {
					if a.Is(code.Keyword) {
						a = a.Kid(0)
					}
					o := e.Expr(a, site.Scope).Under(Environ{})
					if o.Kind != Str {
						return unknown("a setting that may come from the environment", f.At(site.Node))
					}
					prefix = o.Text
				}
				set := &Value{Kind: Env, Text: prefix + "_" + name, Unset: ReadsNull, At: f.At(site.Node)}
				if v != nil {
					set = op("??", true, set.At, set, v)
				}
				v = set
			case "from_object":
				if w := e.fromObject(site, name); w != nil {
					v = w.with(Step{f.At(site.Node), f.Text(site.Node)})
				}
			}
		}
	}
	return v
}

// fromObject follows app.config.from_object("module.Class") or (Class).
func (e *Eval) fromObject(site code.Site, name string) *Value {
	arg := site.Node.Kid(1)
	if arg == nil {
		return nil
	}
	v := e.Expr(arg, site.Scope)
	if v.Kind == Str {
		v = e.Dotted(site.Scope.File, v.Text)
	}
	return e.objectKey(v, name, 0)
}

func (e *Eval) objectKey(v *Value, name string, depth int) *Value {
	if v == nil || depth > 6 {
		return nil
	}
	switch v.Kind {
	case Class, Instance:
		return e.attribute(v, name, nil)
	case Module:
		return e.fromModule(v.Text, name, true)
	case Cond:
		a, b := e.objectKey(v.Kids[1], name, depth+1), e.objectKey(v.Kids[2], name, depth+1)
		if a == nil && b == nil {
			return nil
		}
		if a == nil {
			a = &Value{Kind: Undef}
		}
		if b == nil {
			b = &Value{Kind: Undef}
		}
		return &Value{Kind: Cond, Py: true, Kids: []*Value{v.Kids[0], a, b}, At: v.At}
	case Op:
		if v.Text == "??" || v.Text == "||" {
			a, b := e.objectKey(v.Kids[0], name, depth+1), e.objectKey(v.Kids[1], name, depth+1)
			if a != nil && b != nil {
				return op(v.Text, true, v.At, a, b)
			}
			return a
		}
	}
	return nil
}

// Dotted gives what a dotted Python path such as "config.Production" or
// "shop.wsgi:application" names; nil when it is not in the tree.
func (e *Eval) Dotted(from *code.File, path string) *Value {
	path = strings.Replace(path, ":", ".", 1)
	module, rest := path, []string{}
	for {
		if file, ok := e.Loader.Resolve(from, module, ""); ok {
			v := &Value{Kind: Module, Text: file, At: place.Whole(file)}
			for _, p := range rest {
				v = e.key(v, p, from.Top, nil, v.At)
			}
			return v
		}
		i := strings.LastIndexByte(module, '.')
		if i < 0 {
			return nil
		}
		rest = append([]string{module[i+1:]}, rest...)
		module = module[:i]
	}
}
