package value

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// filtered marks an object that has only those of its keys whose value counts
// as true.
const filtered = "\x00filtered"

// phpCall evaluates what PHP does with the environment, texts and numbers
// (PHP manual, 8.4); nil for any other call.
func (e *Eval) phpCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if !callee.Is(code.Name) {
		return nil
	}
	arg := func(i int) *Value {
		if i+1 < len(n.Kids) {
			return e.expr(n.Kids[i+1], s, c)
		}
		return &Value{Kind: Null, At: at}
	}
	cond := func(test, yes, no *Value) *Value {
		return &Value{Kind: Cond, At: at, Kids: []*Value{test, yes, no}}
	}
	name := strings.ToLower(strings.TrimPrefix(callee.Name, `\`))
	if callee.Is(code.Member) || n.Is(code.New) { // a method or a class of that name
		name = ""
	}
	switch name {
	case "getenv": // false where it is not set
		if len(n.Kids) < 2 {
			return &Value{Kind: EnvMap, Unset: ReadsNull, At: at}
		}
		v := e.envNamed(arg(0), ReadsNull, at)
		if v.Kind == Unknown {
			return v
		}
		if v.Kind == Env {
			if put := e.putenv(v.Text, n, s); put != nil {
				return put
			}
		}
		return op("unset", false, at, v, boolean(false, at))
	case "env": // of Laravel, where the program has none of its own
		for _, f := range e.Loader.Loaded() {
			if f.Lang == code.PHP && len(f.Top.Names["env"]) > 0 {
				return nil
			}
		}
		v := e.envNamed(arg(0), ReadsNull, at)
		if len(n.Kids) > 2 {
			return op("unset", false, at, v, arg(1))
		}
		return v
	case "int", "integer", "intval": // what is no number is 0
		return op("||", false, at, op("parseInt", false, at, op("String", true, at, op("||", false, at, arg(0), text("", at)))), number(0, at))
	case "string", "strval":
		if v := arg(0); v.Kind == Instance {
			if m := e.attribute(v, "__toString()", c); m != nil && m.Kind == Func {
				return e.invoke(m, nil, nil, c)
			}
		}
		return op("concat", false, at, op("||", false, at, arg(0), text("", at)))
	case "bool", "boolval", "boolean":
		return op("Boolean", false, at, arg(0))
	case "trim", "ltrim", "rtrim":
		return op("strip", true, at, arg(0))
	case "strtolower":
		return op("lower", true, at, arg(0))
	case "strtoupper":
		return op("upper", true, at, arg(0))
	case "empty":
		v := arg(0)
		return cond(op("===", false, at, v, text("0", at)), boolean(true, at), op("!", false, at, v))
	case "isset":
		return op("!", false, at, op("nothing", false, at, arg(0)))
	case "is_numeric", "ctype_digit":
		return op("digits", false, at, arg(0))
	case "is_string":
		return op("istext", false, at, arg(0))
	case "is_int", "is_integer":
		return op("isnumber", false, at, arg(0))
	case "is_null":
		return op("nothing", false, at, arg(0))
	case "sprintf":
		if f := arg(0); f.Kind == Str {
			var args []*Value
			for i := 1; i < len(n.Kids)-1; i++ {
				args = append(args, arg(i))
			}
			return percent(f.Text, args, at)
		}
	case "str_starts_with":
		return op("startswith", true, at, arg(0), arg(1))
	case "str_ends_with", "str_contains", "substr":
		args, _ := e.args(n, s, c)
		return textCall(callee.Name, args, code.PHP, at)
	case "str_replace":
		if arg(0).Kind == Str && arg(1).Kind == Str {
			return textCall("replace", []*Value{arg(2), arg(0), arg(1)}, code.PHP, at)
		}
	case "array_key_exists":
		if b := arg(1); b.Kind == EnvMap && arg(0).Kind == Str {
			return op("isset", true, at, &Value{Kind: Env, Text: arg(0).Text, At: at})
		} else if b.Kind == Object && arg(0).Kind == Str && !slices.Contains(b.Keys, "...") {
			return b.Get(arg(0).Text).present(at)
		}
	case "count":
		if b := arg(0); b.Kind == External && b.Text == "$argv" {
			return e.argumentCount(at)
		}
	case "array_filter": // without what is empty
		if b := arg(0); b.Kind == Object && len(n.Kids) == 2 {
			o := *b
			o.Text = filtered
			return &o
		}
	case "array_merge", "array_replace":
		o := &Value{Kind: Object, At: at}
		for i := range len(n.Kids) - 1 {
			o.spread(arg(i), false)
		}
		return o
	case "exit", "die":
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	case "parse_ini_file", "yaml_parse_file":
		return e.phpData(arg(0), at)
	case "json_decode", "parse_ini_string", "yaml_parse":
		if t := arg(0); t.Kind == External && t.Text == "file_get_contents()" && len(t.Kids) == 1 {
			return e.phpData(t.Kids[0], at)
		}
	case "file_get_contents":
		return &Value{Kind: External, Text: "file_get_contents()", At: at, Kids: []*Value{arg(0)}}
	case "filter_var":
		switch arg(1).Text {
		case "FILTER_VALIDATE_INT":
			v := op("||", false, at, arg(0), text("", at))
			fits, whole, otherwise := op("integer", false, at, v), op("parseInt", false, at, v), boolean(false, at)
			if len(n.Kids) > 3 {
				switch given := arg(2); {
				case given.Kind == External && given.Text == "FILTER_NULL_ON_FAILURE":
					otherwise = &Value{Kind: Null, At: at}
				case given.Kind != Object:
					return unknown("the options of filter_var", at)
				}
				options := arg(2).Get("options")
				if d := options.Get("default"); d != nil {
					otherwise = d
				}
				for _, limit := range []struct{ key, sign string }{{"min_range", ">="}, {"max_range", "<="}} {
					if x := options.Get(limit.key); x != nil {
						fits = op("&&", false, at, fits, op(limit.sign, false, at, whole, x))
					}
				}
			}
			return cond(fits, whole, otherwise)
		case "FILTER_VALIDATE_BOOLEAN", "FILTER_VALIDATE_BOOL":
			return op("truthy", false, at, op("||", false, at, arg(0), text("0", at)))
		}
	case "explode":
		if arg(0).Kind == Str {
			return op("split", false, at, arg(1), arg(0))
		}
	case "max", "min":
		if len(n.Kids) > 2 {
			v := &Value{Kind: Op, Text: strings.ToLower(callee.Name), At: at}
			for i := range len(n.Kids) - 1 {
				v.Kids = append(v.Kids, arg(i))
			}
			return v
		}
	case "getopt":
		return e.getopt(arg(0), arg(1), at)
	case "require", "require_once", "include", "include_once":
		to, ok := e.PathOf(arg(0))
		if !ok {
			return nil
		}
		files := []string{to}
		if arg(0).Kind == Str { // a bare name is sought beside the file too
			files = []string{joined2(dirOf(s.File.Name), arg(0).Text), to}
		}
		for _, name := range files {
			if f := e.Loader.File(name); f != nil && f.Body != nil {
				for _, k := range f.Body.Kids {
					if k.Is(code.Return) {
						return e.expr(k.Kid(0), f.Top, nil).with(Step{at, "returned by " + name})
					}
				}
			}
		}
	}
	return nil
}

// phpMethod is the method that a call names, which is told apart from a property
// of its name; nil where the object is not known.
func (e *Eval) phpMethod(callee *code.Node, s *code.Scope, c *context) *Value {
	if base := e.expr(callee.Kid(0), s, c); base.Kind == Instance || base.Kind == Class {
		return e.attribute(base, callee.Name+"()", c)
	}
	return nil
}

// phpData gives the data of a file that the program reads.
func (e *Eval) phpData(file *Value, at place.Span) *Value {
	if v := e.fromNamed(file, at); v != nil {
		return v
	}
	return unknown("what is in a file that is named while the program runs", at)
}

// putenv gives what the program itself writes into a variable before it reads
// it: putenv("PORT=8080").
func (e *Eval) putenv(name string, use *code.Node, s *code.Scope) *Value {
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.PHP {
			continue
		}
		for _, site := range f.Calls {
			fn := site.Node.Kid(0)
			if !fn.Is(code.Name) || fn.Name != "putenv" || len(site.Guards) > 0 || site.Scope.Func != nil || site.Node.Kid(1) == nil || f == s.File && site.Node.Off > use.Off || e.busy(site.Node) {
				continue
			}
			e.active[site.Node] = true
			v := e.Expr(site.Node.Kids[1], site.Scope)
			delete(e.active, site.Node)
			switch rest, ok := strings.CutPrefix(v.firstText(), name+"="); {
			case !ok:
			case v.Kind == Str:
				return text(rest, f.At(site.Node))
			default:
				parts := v.Kids[1:]
				if rest != "" {
					parts = append([]*Value{text(rest, v.At)}, parts...)
				}
				return op("concat", false, f.At(site.Node), parts...)
			}
		}
	}
	return nil
}

// firstText is a text, or the text that others are put behind.
func (v *Value) firstText() string {
	if v.Kind == Op && v.Text == "concat" && len(v.Kids) > 0 {
		v = v.Kids[0]
	}
	return v.literal()
}

// getopt gives the options of the command line: a letter, or a word, with :
// behind it where it takes a value (PHP manual, "getopt").
func (e *Eval) getopt(short, long *Value, at place.Span) *Value {
	o := &Value{Kind: Object, At: at}
	add := func(name, flag string, takes bool) {
		v := e.given([]string{flag})
		if v == nil && takes && len(flag) == 2 { // -p8080
			for _, a := range e.Args {
				if rest, ok := strings.CutPrefix(a.literal(), flag); ok && rest != "" {
					v = text(rest, a.At)
				}
			}
		}
		if v == nil {
			return
		}
		if !takes {
			v = boolean(false, at)
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, v)
	}
	letters := short.literal()
	for i := 0; i < len(letters); i++ {
		if letters[i] != ':' {
			add(letters[i:i+1], "-"+letters[i:i+1], i+1 < len(letters) && letters[i+1] == ':')
		}
	}
	for _, k := range long.Kids {
		if name := strings.TrimRight(k.literal(), ":"); name != "" {
			add(name, "--"+name, name != k.Text)
		}
	}
	return o
}

// phpText is a value as a part of a text: false and null are empty, true is 1.
func phpText(v *Value) *Value {
	switch v.Kind {
	case Str, Num, External, Unknown:
		return v
	}
	return op("astext", false, v.At, v)
}

func dirOf(name string) string {
	if i := strings.LastIndexByte(name, '/'); i >= 0 {
		return name[:i]
	}
	return ""
}

// phpName gives the superglobals, the arguments, constants and names of other
// files.
func (e *Eval) phpName(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	switch n.Name {
	case "$_ENV", "$_SERVER":
		return &Value{Kind: EnvMap, Unset: ReadsNull, At: at}
	case "$GLOBALS":
		o := &Value{Kind: Object, At: at}
		for _, name := range slices.Sorted(maps.Keys(s.File.Top.Names)) {
			if len(s.File.Top.Names[name]) > 0 && strings.HasPrefix(name, "$") {
				if v := e.bindings(s.File.Top.Names[name], s.File.Top, nil, 0); v != nil {
					o.Keys, o.Kids = append(o.Keys, name[1:]), append(o.Kids, v)
				}
			}
		}
		return o
	case "$argv":
		return &Value{Kind: External, Text: "$argv", At: at}
	case "$argc":
		return e.argumentCount(at)
	case "__DIR__":
		return &Value{Kind: External, Text: "__DIR__", At: at}
	}
	if strings.HasPrefix(n.Name, "$") {
		for _, site := range s.File.Calls { // extract($array) makes variables of its keys
			if fn := site.Node.Kid(0); fn.Is(code.Name) && fn.Name == "extract" && site.Scope.Func == s.Func && site.Node.Off < n.Off && site.Node.Kid(1) != nil && !e.busy(site.Node) {
				e.active[site.Node] = true
				v := e.expr(site.Node.Kids[1], site.Scope, c).Get(n.Name[1:])
				delete(e.active, site.Node)
				if v != nil {
					return v.with(Step{s.File.At(site.Node), "extracted here"})
				}
			}
		}
	}
	if cls := s.Class; cls != nil && (n.Name == "self" || n.Name == "static") {
		return &Value{Kind: Class, Text: cls.Name, At: at, ref: &ref{file: s.File, node: cls, scope: s.File.Top}}
	}
	name := strings.TrimPrefix(n.Name, `\`)
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.PHP {
			continue
		}
		short := name[strings.LastIndexByte(name, '\\')+1:]
		if cls := f.Classes[short]; cls != nil {
			return &Value{Kind: Class, Text: short, At: f.At(cls), ref: &ref{file: f, node: cls, scope: f.Top}}
		}
		if f != s.File {
			if v := e.topOf(f, name); v != nil {
				return v
			}
		}
		for _, site := range f.Calls { // define("PORT", 80)
			if fn := site.Node.Kid(0); fn.Is(code.Name) && fn.Name == "define" && site.Node.Kid(1).Is(code.String) && site.Node.Kids[1].Name == name && site.Node.Kid(2) != nil && !e.busy(site.Node) {
				e.active[site.Node] = true
				v := e.Expr(site.Node.Kids[2], site.Scope)
				delete(e.active, site.Node)
				return v
			}
		}
	}
	if name != "" && name[0] != '$' {
		for _, i := range s.File.Imports { // use React\Socket\SocketServer
			if i.Node.Name == name || strings.HasSuffix(i.Node.Name, `\`+name) {
				name = i.Node.Name
			}
		}
		return &Value{Kind: External, Text: name, At: at}
	}
	return nil
}
