package value

import (
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// What the class library of Java and the standard library of Kotlin do with
// texts, numbers, the environment and values that may be missing
// (documentation of Java SE 21, packages java.lang and java.util; Kotlin 2.2
// standard library; read 2026-11).

// jvm tells the languages whose names of classes are looked up in packages and
// whose methods see the members of their class.
func jvm(l code.Language) bool { return l == code.Java || l == code.Kotlin }

// members tells the languages in which a bare name may be a member of the
// class around it.
func members(l code.Language) bool { return jvm(l) || l == code.CSharp }

// className resolves the name of a class: one of the tree, one that an import
// names, or one of the language's own.
func (e *Eval) className(f *code.File, name string, at place.Span) *Value {
	class := func(g *code.File) *Value {
		if g == nil {
			return nil
		}
		if n := g.Classes[name]; n != nil {
			return &Value{Kind: Class, Text: name, At: g.At(n), ref: &ref{file: g, node: n, scope: g.Top}}
		}
		return nil
	}
	if v := class(f); v != nil {
		return v
	}
	path := ""
	for _, i := range f.Imports {
		if strings.HasSuffix(i.Node.Name, "."+name) {
			path = i.Node.Name
		}
	}
	for _, ask := range []string{path, name} {
		if to, ok := e.Loader.Resolve(f, ask, ""); ok && ask != "" {
			if v := class(e.Loader.File(to)); v != nil {
				return v.with(Step{at, "uses " + to})
			}
			if v := e.topOf(e.Loader.File(to), name); v != nil {
				return v
			}
		}
	}
	for _, g := range e.Loader.Loaded() {
		if g.Lang != f.Lang {
			continue
		}
		if v := class(g); v != nil && path == "" {
			return v.with(Step{at, "uses " + g.Name})
		}
		if f.Lang == code.Kotlin { // functions and values at the top of other files
			if v := e.topOf(g, name); v != nil {
				return v
			}
		}
	}
	if path == "" {
		path = name
	}
	return &Value{Kind: External, Text: simple(path), At: at}
}

func (e *Eval) topOf(g *code.File, name string) *Value {
	if g == nil || g.Top == nil || len(g.Top.Names[name]) == 0 {
		return nil
	}
	return e.bindings(g.Top.Names[name], g.Top, nil, 0)
}

// simple takes the package off the name of a class of the platform.
func simple(path string) string {
	for _, p := range []string{"java.", "javax.", "com.sun.net.", "kotlin."} {
		if !strings.HasPrefix(path, p) {
			continue
		}
		parts := strings.Split(path, ".")
		for i, x := range parts {
			if x != "" && x[0] >= 'A' && x[0] <= 'Z' {
				return strings.Join(parts[i:], ".")
			}
		}
		if p == "kotlin." {
			return parts[len(parts)-1]
		}
	}
	return path
}

// Platform is the name of a class of Java as this package writes it: those of the
// platform without their package.
func Platform(path string) string { return simple(path) }

// mapTypes are the maps of the class library that a program fills.
var mapTypes = map[string]bool{"HashMap": true, "TreeMap": true, "LinkedHashMap": true, "ConcurrentHashMap": true}

// jvmCall evaluates a call; nil where nothing is known of it.
func (e *Eval) jvmCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if callee.Is(code.Name) {
		if callee.Name == "name" && len(n.Kids) == 1 {
			if v := constantName(e.this(s, c)); v != nil {
				return v
			}
		}
		switch callee.Name {
		case "int", "short", "long", "Integer", "String", "Long", "Object": // a cast
			if len(n.Kids) == 2 && n.Is(code.Call) {
				return e.expr(n.Kids[1], s, c)
			}
		case "requireNotNull", "checkNotNull", "listOf", "arrayOf", "mapOf", "lazy", "run":
			args, _ := e.args(n, s, c)
			return e.jvmStatic(callee.Name, args, c, at)
		}
		fn := e.expr(callee, s, c)
		if fn.Kind == External && mapTypes[Tail(fn.Text, 1)] {
			args, _ := e.args(n, s, c)
			return e.jvmStatic("HashMap()", args, c, at)
		}
		if fn.Kind == External && n.Is(code.Call) {
			args, _ := e.args(n, s, c)
			return e.jvmStatic(fn.Text, args, c, at)
		}
		return nil
	}
	if !callee.Is(code.Member) {
		return nil
	}
	base := e.expr(callee.Kid(0), s, c)
	name := callee.Name
	if name == "name" && len(n.Kids) == 1 {
		if v := constantName(base); v != nil {
			return v
		}
	}
	if base.Kind == Class && name == "valueOf" && len(n.Kids) == 2 {
		if v := e.constantOf(base, e.expr(n.Kids[1], s, c), c, at); v != nil {
			return v
		}
	}
	switch base.Kind {
	case External:
		args, _ := e.args(n, s, c)
		if base.Text == "ResourceBundle.getBundle()" && name == "getString" && len(args) == 1 && len(base.Kids) > 0 {
			p := joined2(e.Dir, "src/main/resources/"+strings.ReplaceAll(base.Kids[0].literal(), ".", "/")+".properties")
			if d := e.Loader.Data(p).Get(args[0].literal()); d != nil {
				return FromDocument(d).with(Step{at, "reads " + p})
			}
			return unknown("a text of a bundle of resources", at)
		}
		if v := e.jvmStatic(base.Text+"."+name, args, c, at); v != nil {
			return v
		}
		if applying[name] && len(args) == 1 {
			switch {
			case base.Text == "Function.identity()" || base.Text == "UnaryOperator.identity()":
				return args[0]
			case !strings.HasSuffix(base.Text, ")"): // Integer::parseInt
				return e.apply(base, args, c, at)
			}
		}
		if base.Text == "Properties()" && (name == "getProperty" || name == "getOrDefault") {
			return e.jvmProperty(callee.Kid(0), args, s, at)
		}
		if base.Text == "main.args" {
			switch name {
			case "getOrNull", "get", "getOrElse":
				if len(args) > 0 && args[0].Kind == Num {
					v := e.argumentAt(int(args[0].Num), at)
					if name != "get" {
						v = e.argumentOr(int(args[0].Num), at)
					}
					if name == "getOrElse" && len(args) > 1 {
						return op("??", true, at, v, e.apply(args[1], args[:1], c, at))
					}
					return v
				}
			case "firstOrNull":
				return e.argumentOr(0, at)
			case "first":
				return e.argumentAt(0, at)
			case "isNotEmpty":
				return op(">", true, at, e.arguments(at), number(0, at))
			case "isEmpty":
				return op("===", true, at, e.arguments(at), number(0, at))
			}
		}
		return nil
	case Class:
		return nil
	case Instance:
		v := e.attribute(base, name, c)
		if v == nil {
			for _, p := range []string{"get", "is"} { // what is written by a library: getPort
				if rest, ok := strings.CutPrefix(name, p); ok && rest != "" {
					v = e.attribute(base, strings.ToLower(rest[:1])+rest[1:], c)
				}
			}
		}
		if v != nil && v.Kind != Func && len(n.Kids) == 1 {
			return v // of a record, or of one of these
		}
		return nil
	}
	args, _ := e.args(n, s, c)
	if base.Kind == Func && applying[name] {
		return e.apply(base, args, c, at)
	}
	v := e.jvmMethod(base, name, args, c, at)
	if end := int(callee.Kid(0).End); v != nil && s.File.Lang == code.Kotlin && end < len(s.File.Src) && s.File.Src[end] == '?' { // ?. gives null on null
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{missing(base, at), {Kind: Null, At: at}, v}}
	}
	return v
}

// applying are the methods that call a function that is held as an object
// (package java.util.function; Kotlin's invoke).
var applying = map[string]bool{"apply": true, "applyAsInt": true, "get": true, "getAsInt": true, "invoke": true, "test": true, "call": true}

// apply calls a function, a lambda or a method that is named.
func (e *Eval) apply(fn *Value, args []*Value, c *context, at place.Span) *Value {
	switch fn.Kind {
	case Func:
		if ps := fn.ref.node.Kid(0); len(ps.Kids) == 0 && len(args) > 0 && fn.ref.file.Lang == code.Kotlin {
			return e.invokeIt(fn, args[0], c)
		}
		return e.invoke(fn, args, nil, c)
	case External:
		if v := e.jvmStatic(fn.Text, args, c, at); v != nil {
			return v
		}
		if i := strings.LastIndexByte(fn.Text, '.'); i > 0 && len(args) > 0 { // String::trim
			if v := e.jvmMethod(args[0], fn.Text[i+1:], args[1:], c, at); v != nil {
				return v
			}
		}
	}
	return unknown("what "+fn.String()+" returns", at)
}

// invokeIt calls a lambda of Kotlin whose parameter has no name: it.
func (e *Eval) invokeIt(fn, it *Value, c *context) *Value {
	r := fn.ref
	inner := r.file.Funcs[r.node]
	if inner == nil || e.busy(r.node) {
		return unknown("what a lambda returns", fn.At)
	}
	e.active[r.node] = true
	defer delete(e.active, r.node)
	ctx := &context{fn: r.node, keys: map[string]*Value{"it": it}, this: r.this, up: c}
	return e.lastOf(r.node.Kid(1), inner, ctx)
}

// lastOf is the value of a block: what it returns, or its last expression.
func (e *Eval) lastOf(body *code.Node, s *code.Scope, c *context) *Value {
	if !body.Is(code.Block) {
		return e.expr(body, s, c)
	}
	if v := e.body(body.Kids, s, c); v != nil {
		return v
	}
	if n := len(body.Kids); n > 0 {
		if last := body.Kids[n-1]; last.Is(code.ExprStmt) {
			return e.expr(last.Kid(0), s, c)
		}
	}
	return &Value{Kind: Undef}
}

// missing tests whether a value is null.
func missing(v *Value, at place.Span) *Value {
	return op("nothing", true, at, v)
}

// must is a value that ends the program where it is null.
func must(v *Value, at place.Span) *Value {
	gone := &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	if v.Kind == Env {
		w := *v
		w.Unset = Raises
		return &w
	}
	return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{missing(v, at), gone, v}}
}

// jvmStatic evaluates functions of classes; nil for others.
func (e *Eval) jvmStatic(fn string, args []*Value, c *context, at place.Span) *Value {
	arg := func(i int) *Value {
		if i < len(args) {
			return args[i]
		}
		return &Value{Kind: Null, At: at}
	}
	switch fn {
	case "System.getenv":
		if len(args) == 0 {
			return &Value{Kind: EnvMap, Unset: ReadsNull, At: at}
		}
		return e.envNamed(args[0], ReadsNull, at)
	case "System.getProperty":
		return e.systemProperty(arg(0), arg(1), at)
	case "Integer.getInteger", "Long.getLong":
		return op("??", true, at, maybe(e.systemProperty(arg(0), &Value{Kind: Null}, at), at), arg(1))
	case "Integer.parseInt", "Integer.valueOf", "Integer.decode", "Long.parseLong", "Long.valueOf", "Short.parseShort", "Integer.parseUnsignedInt":
		return op("wholenumber", true, at, arg(0))
	case "Boolean.parseBoolean", "Boolean.valueOf":
		return op("===", true, at, op("lower", true, at, op("String", true, at, arg(0))), text("true", at))
	case "String.valueOf", "Integer.toString", "Objects.toString", "String.copyValueOf":
		if len(args) > 1 {
			return op("??", true, at, args[0], args[1])
		}
		return op("String", true, at, arg(0))
	case "Objects.requireNonNullElse", "ObjectUtils.firstNonNull", "StringUtils.defaultString":
		return op("??", true, at, arg(0), arg(1))
	case "StringUtils.defaultIfBlank", "StringUtils.defaultIfEmpty":
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("blank", true, at, arg(0)), arg(1), arg(0)}}
	case "Objects.requireNonNullElseGet":
		return op("??", true, at, arg(0), e.apply(arg(1), nil, c, at))
	case "Objects.requireNonNull", "requireNotNull", "checkNotNull":
		return must(arg(0), at)
	case "Objects.isNull":
		return missing(arg(0), at)
	case "Objects.nonNull":
		return op("!", true, at, missing(arg(0), at))
	case "Objects.equals":
		return op("===", true, at, arg(0), arg(1))
	case "Optional.ofNullable", "Optional.of":
		return arg(0)
	case "Optional.empty":
		return &Value{Kind: Null, At: at}
	case "String.format", "java.lang.String.format":
		if len(args) > 0 && args[0].Kind == Str {
			return percent(args[0].Text, args[1:], at)
		}
	case "String.join":
		return unknown("texts that are joined", at)
	case "Map.of", "java.util.Map.of":
		o := &Value{Kind: Object, At: at}
		for i := 0; i+1 < len(args); i += 2 {
			if args[i].Kind != Str {
				return nil
			}
			o.Keys, o.Kids = append(o.Keys, args[i].Text), append(o.Kids, args[i+1])
		}
		return o
	case "HashMap()":
		o := &Value{Kind: Object, At: at}
		for _, a := range args {
			o.spread(a, true)
		}
		return o
	case "List.of", "Arrays.asList", "listOf", "arrayOf", "Set.of", "setOf":
		if len(args) == 1 && args[0].Kind == External && args[0].Text == "main.args" {
			return &Value{Kind: List, Kids: e.Args, At: at}
		}
		if slices.ContainsFunc(args, func(a *Value) bool { return a.Kind == External || a.Kind == Unknown }) {
			return unknown("what is in a list", at)
		}
		return &Value{Kind: List, Kids: args, At: at}
	case "InetAddress.getByName", "Inet4Address.getByName":
		return op("??", true, at, arg(0), text("localhost", at))
	case "InetAddress.getLoopbackAddress":
		return text("127.0.0.1", at)
	case "Math.max", "Math.min":
		if len(args) == 2 {
			return op(strings.TrimPrefix(fn, "Math."), true, at, args...)
		}
	case "Math.abs":
		return arg(0)
	case "lazy", "run":
		if len(args) > 0 && args[len(args)-1].Kind == Func {
			f := args[len(args)-1]
			if inner := f.ref.file.Funcs[f.ref.node]; inner != nil {
				return e.lastOf(f.ref.node.Kid(1), inner, &context{fn: f.ref.node, this: f.ref.this, up: c})
			}
		}
	case "Paths.get", "Path.of", "File()", "FileInputStream()", "FileReader()", "Files.newInputStream", "Files.newBufferedReader":
		return nil
	}
	if strings.HasPrefix(fn, "io.github.cdimascio.dotenv.Dotenv.") && strings.HasSuffix(fn, ".get") {
		v := e.envNamed(arg(0), ReadsNull, at)
		if len(args) > 1 {
			return op("??", true, at, v, args[1])
		}
		return v
	}
	return nil
}

func (e *Eval) envNamed(name *Value, unset Unset, at place.Span) *Value {
	n := name.Under(Environ{})
	if n.Kind != Str {
		return unknown("a variable whose name is made while the program runs", at)
	}
	return e.assigned(&Value{Kind: Env, Text: n.Text, Unset: unset, At: at})
}

// systemProperty is a property that the command line sets with -D.
func (e *Eval) systemProperty(name, def *Value, at place.Span) *Value {
	if name.Kind != Str {
		return unknown("a property whose name is made while the program runs", at)
	}
	if v := e.Properties[name.Text]; v != nil {
		return v
	}
	return def
}

// maybe is a number, or null where the text is none.
func maybe(v *Value, at place.Span) *Value {
	return op("catch", true, at, &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{missing(v, at), {Kind: Null, At: at}, op("wholenumber", true, at, v)}}, &Value{Kind: Null, At: at})
}

// jvmMethod evaluates methods of texts, of values that may be missing, of maps.
func (e *Eval) jvmMethod(base *Value, name string, args []*Value, c *context, at place.Span) *Value {
	arg := func(i int) *Value {
		if i < len(args) {
			return args[i]
		}
		return &Value{Kind: Null, At: at}
	}
	null := &Value{Kind: Null, At: at}
	cond := func(test, yes, no *Value) *Value {
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{test, yes, no}}
	}
	switch base.Kind {
	case EnvMap:
		switch name {
		case "get":
			return e.envNamed(arg(0), ReadsNull, at)
		case "getValue":
			return e.envNamed(arg(0), Raises, at)
		case "getOrDefault", "getOrElse":
			d := arg(1)
			if d.Kind == Func {
				d = e.apply(d, nil, c, at)
			}
			return op("??", true, at, e.envNamed(arg(0), ReadsNull, at), d)
		case "containsKey", "contains":
			return op("!", true, at, missing(e.envNamed(arg(0), ReadsNull, at), at))
		}
		return nil
	case Object:
		if len(args) > 0 {
			args[0] = args[0].folded()
		}
		if arg(0).Kind == Str && (name == "get" || name == "getOrDefault" || name == "getValue") {
			other := &Value{Kind: Null, At: at}
			if len(args) > 1 {
				other = arg(1)
			}
			return base.held(arg(0).Text, other)
		}
		if arg(0).Kind == Str && name == "containsKey" && !slices.Contains(base.Keys, "...") {
			return base.Get(arg(0).Text).present(at)
		}
		if (name == "get" || name == "getOrDefault") && len(arg(0).Variables()) > 0 && len(base.Keys) <= 24 && !slices.Contains(base.Keys, "...") {
			return pickOr(arg(0), base, arg(1))
		}
	case List:
		if (name == "get" || name == "getFirst" || name == "first") && (arg(0).Kind == Num || len(args) == 0) {
			i := 0
			if len(args) > 0 {
				i = int(arg(0).Num)
			}
			if i >= 0 && i < len(base.Kids) {
				return base.Kids[i]
			}
		}
	}
	switch name {
	case "isEmpty":
		return op("empty", true, at, base)
	case "isNotEmpty":
		return op("!", true, at, op("empty", true, at, base))
	case "isBlank", "isNullOrBlank":
		return op("blank", true, at, base)
	case "isNullOrEmpty":
		return op("empty", true, at, base)
	case "isNotBlank":
		return op("!", true, at, op("blank", true, at, base))
	case "equals", "contentEquals", "Equals":
		return op("===", true, at, base, arg(0))
	case "equalsIgnoreCase":
		other := arg(0) // nothing is equal to no text
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("nothing", true, at, other), boolean(false, at), op("===", true, at, op("lower", true, at, base), op("lower", true, at, other))}}
	case "trim", "strip", "stripLeading", "stripTrailing":
		return op("strip", true, at, base)
	case "toLowerCase", "lowercase":
		return op("lower", true, at, base)
	case "toUpperCase", "uppercase":
		return op("upper", true, at, base)
	case "startsWith":
		return op("startswith", true, at, base, arg(0))
	case "contains", "endsWith", "replace", "replaceAll", "removePrefix", "removeSuffix", "substring":
		return textCall(name, append([]*Value{base}, args...), code.Java, at)
	case "length", "size":
		return op("length", true, at, base)
	case "toString", "intern", "orElseThrow", "get", "toInt", "toLong", "intValue", "longValue", "asString", "trimToNull":
		switch name {
		case "toInt", "toLong":
			return op("wholenumber", true, at, base)
		case "get", "orElseThrow":
			return must(base, at)
		}
		return base
	case "toIntOrNull", "toLongOrNull":
		return maybe(base, at)
	case "toBoolean":
		return op("===", true, at, op("lower", true, at, op("String", true, at, base)), text("true", at))
	case "concat", "plus":
		return Concat(base, arg(0))
	case "formatted", "format":
		if base.Kind == Str {
			return percent(base.Text, args, at)
		}
	case "split":
		return op("split", false, at, base, arg(0))
	case "matches":
		if r := arg(0); r.Kind == Str {
			switch strings.Trim(r.Text, "^$") {
			case `\d+`, `[0-9]+`, `\\d+`:
				return op("digits", true, at, base)
			}
		}
	case "map", "let", "mapToInt":
		return cond(missing(base, at), null, e.apply(arg(0), []*Value{base}, c, at))
	case "flatMap":
		return cond(missing(base, at), null, e.apply(arg(0), []*Value{base}, c, at))
	case "filter", "takeIf":
		return cond(missing(base, at), null, cond(e.apply(arg(0), []*Value{base}, c, at), base, null))
	case "takeUnless":
		return cond(missing(base, at), null, cond(e.apply(arg(0), []*Value{base}, c, at), null, base))
	case "also", "apply":
		return base
	case "orElse", "orElseGet", "or":
		d := arg(0)
		if d.Kind == Func {
			d = e.apply(d, nil, c, at)
		}
		return op("??", true, at, base, d)
	case "orEmpty":
		return op("??", true, at, base, text("", at))
	case "ifEmpty", "ifBlank":
		test := map[string]string{"ifEmpty": "empty", "ifBlank": "blank"}[name]
		return cond(op(test, true, at, base), e.apply(arg(0), nil, c, at), base)
	case "isPresent":
		return op("!", true, at, missing(base, at))
	case "getOrElse":
		return op("catch", true, at, base, e.apply(arg(0), nil, c, at))
	}
	return nil
}

// constantOf is the constant of an enumeration by its name; an error where it has
// none of that name. Nil where the class is no enumeration.
func (e *Eval) constantOf(class, name *Value, c *context, at place.Span) *Value {
	var v *Value
	for _, b := range slices.Backward(class.ref.node.Kid(1).Kids) {
		if !b.Is(code.Bind) || !b.Kid(1).Is(code.New) || b.Kid(1).Alias == "" {
			continue
		}
		one := e.attribute(class, b.Kid(1).Alias, c)
		if one == nil {
			return nil
		}
		if v == nil {
			v = &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
		}
		v = &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("===", true, at, name, text(b.Kid(1).Alias, at)), one, v}}
	}
	return v
}

// constantName is the name of a constant of an enumeration; nil for any other
// value (java.lang.Enum of Java 25, name).
func constantName(v *Value) *Value {
	if v == nil || v.Kind != Instance || v.ref == nil || v.ref.own == "" {
		return nil
	}
	return text(v.ref.own, v.At)
}

// jvmProperty reads a property of a file that was loaded into an object:
// p.load(new FileInputStream("x.properties")).
func (e *Eval) jvmProperty(obj *code.Node, args []*Value, s *code.Scope, at place.Span) *Value {
	if len(args) == 0 || args[0].Kind != Str || !obj.Is(code.Name) {
		return nil
	}
	for _, site := range slices.Backward(s.File.Calls) { // what the program itself sets
		fn := site.Node.Kid(0)
		if !fn.Is(code.Member) || fn.Name != "setProperty" && fn.Name != "put" || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != obj.Name || len(site.Node.Kids) != 3 || e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		k, v := e.Expr(site.Node.Kids[1], site.Scope), e.Expr(site.Node.Kids[2], site.Scope)
		delete(e.active, site.Node)
		switch {
		case k.Kind == Str && k.Text != args[0].Text:
		case k.Kind != Str || len(site.Guards) > 0 || site.Scope != s:
			return unknown("a property that the program sets under a condition", at)
		default:
			return v.with(Step{s.File.At(site.Node), s.File.Text(site.Node)})
		}
	}
	for _, site := range s.File.Calls {
		fn := site.Node.Kid(0)
		if !fn.Is(code.Member) || fn.Name != "load" || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != obj.Name {
			continue
		}
		file := ""
		var made *Value // a name that is made while the program runs
		find := func(k *code.Node) bool {
			switch {
			case k.Is(code.String) && strings.HasSuffix(k.Name, ".properties"):
				if file == "" {
					file = k.Name
				}
			case k.Is(code.Name), k.Is(code.Binary), k.Is(code.Template), k.Is(code.Call): // a constant, or one that is made
				switch v := e.expr(k, site.Scope, nil); {
				case v.Kind == Str && strings.HasSuffix(v.Text, ".properties"):
					file = v.Text
				case made == nil && (v.Kind == Op || v.Kind == Cond || v.Kind == Env) && len(v.Variables()) > 0:
					made = v
				}
			}
			return true
		}
		for _, a := range site.Node.Args() {
			a.Walk(find)
			if a.Is(code.Name) { // what was opened before
				for x := site.Scope; x != nil; x = x.Parent {
					for _, b := range x.Names[a.Name] {
						b.Value.Walk(find)
					}
				}
			}
		}
		if made != nil {
			ask := func(d *document.Node) *Value {
				if n := d.Get(args[0].Text); n != nil {
					return FromDocument(n).with(Step{at, "reads " + d.At().File})
				}
				if len(args) > 1 {
					return args[1]
				}
				return &Value{Kind: Null, At: at}
			}
			for _, dir := range []string{e.Dir, joined2(e.Dir, "src/main/resources")} {
				if v := e.namedIn(dir, nil, made, at, ask, 0); v != nil {
					return v
				}
			}
		}
		rest := strings.TrimPrefix(file, "/")
		for _, p := range []string{joined2(e.Dir, rest), joined2(e.Dir, "src/main/resources/"+rest)} {
			if d := e.Loader.Data(p); d != nil && file != "" {
				if n := d.Get(args[0].Text); n != nil {
					return FromDocument(n).with(Step{at, "reads " + p})
				}
				if len(args) > 1 {
					return args[1]
				}
				return &Value{Kind: Null, At: at}
			}
		}
	}
	return unknown("a property of a file that is not read", at)
}

func joined2(dir, name string) string {
	if dir == "" {
		return name
	}
	return dir + "/" + name
}
