package value

import (
	"bytes"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// rustSame are the methods and functions of Rust that change the kind of a
// value and not what it says (Rust standard library, 1.91).
var rustSame = map[string]bool{
	"to_string": true, "to_owned": true, "into": true, "clone": true, "as_str": true, "as_ref": true, "as_deref": true, "as_mut": true, "cloned": true, "copied": true, "borrow": true, "into_string": true, "to_socket_addrs": true, "as_bytes": true, "iter": true, "into_iter": true, "try_into": true, "unwrap": true, "expect": true, "to_string_lossy": true, "into_boxed_str": true, "map_err": true, "context": true, "with_context": true, "wrap_err": true, "as_slice": true, "deref": true, "boxed": true, "unwrap_unchecked": true, "ok_or": true, "ok_or_else": true, "inspect": true, "inspect_err": true, "leak": true, "into_inner": true, "next": false,
	"Ok": true, "Some": true, "Box.new": true, "Arc.new": true, "Rc.new": true, "String.from": true, "Cow.from": true, "Cow.Borrowed": true, "IpAddr.V4": true, "IpAddr.V6": true, "IpAddr.from": true, "SocketAddr.V4": true, "SocketAddr.V6": true, "u16.from": true, "u32.from": true, "u64.from": true, "i32.from": true, "usize.from": true, "u16.try_from": true, "Port": true, "Into.into": true, "Cow.Owned": true, "PathBuf.from": true, "Mutex.new": true, "RwLock.new": true, "Data.new": true,
}

// rustCall evaluates the calls of Rust that read the environment and the
// arguments, work on results and options, and make addresses (Rust standard
// library 1.91; clap 4, derive reference; envy 0.4); nil for any other call.
func (e *Eval) rustCall(n *code.Node, s *code.Scope, c *context) *Value {
	v := e.rustCalled(n, s, c)
	if n.Alias == "" {
		return v
	}
	of := v
	for of != nil && of.Kind == Op && (of.Text == "unwrap" || of.Text == "catch") {
		of = of.Kids[0]
	}
	if of != nil && of.Kind == External && of.Text == "envy" { // the type stands at the name that it is bound to
		return e.envy(n.Alias, of.Kids[0].Text, of.At)
	}
	return v
}

func (e *Eval) rustCalled(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	arg := func(i int) *Value {
		if i+1 < len(n.Kids) {
			return e.expr(n.Kids[i+1], s, c)
		}
		return &Value{Kind: Null, At: at}
	}
	if path := callee.Dotted(); path != "" && !e.rustBound(callee, s) {
		last := Tail(path, 1)
		two := Tail(path, 2)
		switch two {
		case "env.var", "env.var_os", "var", "dotenvy.var", "dotenv.var":
			if two != "var" || e.rustImports(s.File, "env") {
				return e.envNamed(arg(0), Raises, at)
			}
		case "env.args", "args", "env.args_os":
			return &Value{Kind: External, Text: "rust.args", At: at}
		case "process.exit", "exit", "panic", "unreachable", "todo", "bail", "process.abort":
			return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
		case "format", "format_args", "concat":
			return e.rustFormat(n, s, c)
		case "String.new":
			return text("", at)
		case "matches":
			if len(n.Kids) > 2 {
				if v := e.rustMatches(arg(0), n.Kids[2], s, c, at); v != nil {
					return v
				}
			}
		case "option_env", "env": // of the machine that builds
			return unknown("a variable that is read while it is built", at)
		case "max", "cmp.max", "min", "cmp.min":
			if len(n.Kids) == 3 {
				return op(last, true, at, arg(0), arg(1))
			}
		case "Ipv4Addr.new", "Ipv4Addr.from", "IpAddr.from":
			v := &Value{Kind: List, At: at}
			for i := range len(n.Kids) - 1 {
				v.Kids = append(v.Kids, arg(i))
			}
			if len(v.Kids) == 1 {
				v = v.Kids[0]
			}
			return rustIP(v, at)
		case "Ipv6Addr.new":
			for i := range len(n.Kids) - 1 {
				if a := arg(i); a.Kind != Num || a.Num != 0 && !(i == 7 && a.Num == 1) {
					return unknown("an address of IPv6", at)
				}
			}
			if arg(7).Num == 1 {
				return text("::1", at)
			}
			return text("::", at)
		case "SocketAddr.new", "SocketAddrV4.new", "SocketAddrV6.new":
			return &Value{Kind: List, At: at, Kids: []*Value{rustIP(arg(0), at), arg(1)}}
		case "SocketAddr.from":
			if a := arg(0); a.Kind == List && len(a.Kids) == 2 {
				return &Value{Kind: List, At: at, Kids: []*Value{rustIP(a.Kids[0], at), a.Kids[1]}}
			}
			return arg(0)
		case "String.from_utf8", "fs.read_to_string":
			return unknown("what a file holds", at)
		case "envy.from_env":
			return e.envy(callee.Alias, "", at)
		}
		if rustSame[two] || rustSame[last] && !strings.Contains(path, ".") {
			return arg(0)
		}
		if v := e.rustFunction(path, n, nil, s, c); v != nil {
			return v
		}
		if c := path[0]; c >= 'A' && c <= 'Z' && (last == "parse" || last == "parse_from" || last == "try_parse") && strings.Count(path, ".") == 1 {
			if cls, f := e.rustStruct(strings.TrimSuffix(path, "."+last)); cls != nil { // a derived parser of clap
				return &Value{Kind: External, Text: "clap", At: at, ref: &ref{file: f, node: cls, scope: f.Top}}
			}
		}
		if v := e.rustStructDefault(path, s.File); v != nil {
			return v
		}
	}
	if !callee.Is(code.Member) {
		return nil
	}
	name := callee.Name
	if (name == "get_one" || name == "value_of" || name == "get_flag") && n.Kid(1).Is(code.String) {
		if v := e.clapArg(n.Kids[1].Name, at); v != nil {
			return v
		}
	}
	if name == "from_env" && callee.Kid(0).Is(code.Call) && Tail(callee.Kid(0).Kid(0).Dotted(), 2) == "envy.prefixed" {
		if p := e.expr(callee.Kid(0).Kid(1), s, c); p.Kind == Str {
			return e.envy(callee.Alias, p.Text, at)
		}
	}
	base := e.expr(callee.Kid(0), s, c)
	closure := func(i int, in ...*Value) *Value {
		f := arg(i)
		if f.Kind == Func {
			return e.invoke(f, in, nil, c)
		}
		if k := n.Kid(i + 1); k != nil && len(in) == 1 { // a function by its path: str::parse, Some
			last := k.Dotted()
			last = Tail(last, 1)
			if rustSame[last] {
				return in[0]
			}
			if last == "parse" {
				return op("rustparse", true, at, in[0])
			}
			if last == "new" || last == "default" {
				return text("", at)
			}
		}
		return unknown("what a function gives that is handed over", at)
	}
	holds := func(v *Value) *Value { return op("holds", true, at, v) }
	none := func(v *Value) *Value { return op("catch", true, at, v, &Value{Kind: Null, At: at}) }
	cond := func(test, yes, no *Value) *Value {
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{test, yes, no}}
	}
	switch name {
	case "ok", "err", "flatten":
		return none(base)
	case "unwrap", "expect", "ok_or", "ok_or_else", "context":
		return op("unwrap", true, at, base)
	case "unwrap_or":
		return op("??", true, at, none(base), arg(0))
	case "unwrap_or_else":
		return op("??", true, at, none(base), closure(0, &Value{Kind: Undef}))
	case "unwrap_or_default":
		return op("??", true, at, none(base), op("rustdefault", true, at, none(base), boolean(parses(callee.Kid(0)), at)))
	case "or", "or_else":
		alt := arg(0)
		if alt.Kind == Func {
			alt = closure(0, &Value{Kind: Undef})
		}
		return op("??", true, at, none(base), alt)
	case "and_then", "map":
		return cond(holds(base), closure(0, base), base)
	case "map_or":
		return cond(holds(base), closure(1, base), arg(0))
	case "map_or_else":
		return cond(holds(base), closure(1, base), closure(0, &Value{Kind: Undef}))
	case "is_some_and", "is_ok_and":
		return cond(holds(base), closure(0, base), boolean(false, at))
	case "filter":
		return cond(holds(base), cond(closure(0, base), base, &Value{Kind: Null, At: at}), base)
	case "is_ok", "is_some":
		return holds(base)
	case "is_err", "is_none":
		return op("!", true, at, holds(base))
	case "parse":
		return op("rustparse", true, at, base)
	case "is_empty":
		return op("empty", true, at, base)
	case "trim", "trim_end", "trim_start":
		return op("strip", true, at, base)
	case "to_lowercase", "to_ascii_lowercase":
		return op("lower", true, at, base)
	case "to_uppercase", "to_ascii_uppercase":
		return op("upper", true, at, base)
	case "eq_ignore_ascii_case":
		return op("==", true, at, op("lower", true, at, base), op("lower", true, at, arg(0)))
	case "eq":
		return op("==", true, at, base, arg(0))
	case "ends_with", "contains", "replace", "trim_start_matches", "trim_end_matches":
		args, _ := e.args(n, s, c)
		return textCall(name, append([]*Value{base}, args...), code.Rust, at)
	case "starts_with":
		return op("startswith", true, at, base, arg(0))
	case "max", "min":
		if len(n.Kids) == 2 {
			return op(name, true, at, base, arg(0))
		}
	case "collect", "peekable":
		if base.Kind == External && base.Text == "rust.args" {
			return base
		}
	case "skip":
		if base.Kind == External && base.Text == "rust.args" && arg(0).Num == 1 {
			return &Value{Kind: External, Text: "rust.args.skip", At: at}
		}
	case "nth", "get":
		if base.Kind == External && strings.HasPrefix(base.Text, "rust.args") && arg(0).Kind == Num {
			i := int(arg(0).Num)
			if base.Text == "rust.args" {
				i--
			}
			if i >= 0 && i < len(e.Args) {
				return e.Args[i]
			}
			return &Value{Kind: Null, At: at}
		}
	case "next":
		if base.Kind == External && base.Text == "rust.args.skip" {
			if len(e.Args) > 0 {
				return e.Args[0]
			}
			return &Value{Kind: Null, At: at}
		}
	case "len":
		if base.Kind == External && base.Text == "rust.args" {
			return e.argumentCount(at)
		}
	case "set_port":
		return base
	case "port", "ip":
		if base.Kind == List && len(base.Kids) == 2 {
			return base.Kids[map[string]int{"ip": 0, "port": 1}[name]]
		}
	}
	if rustSame[name] {
		return base
	}
	if t := rustType(base, 0); t != "" {
		if v := e.rustFunction(t+"."+name, n, base, s, c); v != nil {
			return v
		}
	}
	return nil
}

// rustType is the name of the type of a struct's value or of one of an
// enumeration; empty where it is not known.
func rustType(v *Value, depth int) string {
	switch {
	case depth > 20:
	case v.Kind == Object:
		return v.Text
	case v.Kind == External && strings.HasPrefix(v.Text, "enum "):
		t, _, _ := strings.Cut(v.Text[5:], ".")
		return t
	case v.Kind == Cond || v.Kind == Op && (v.Text == "??" || v.Text == "catch" || v.Text == "unwrap"):
		for i := len(v.Kids) - 1; i >= 0 && (i > 0 || v.Kind == Op); i-- {
			if t := rustType(v.Kids[i], depth+1); t != "" {
				return t
			}
		}
	}
	return ""
}

// parses reports whether a chain of calls ends in a conversion to a number.
func parses(n *code.Node) bool {
	for n.Is(code.Call) {
		f := n.Kid(0)
		if !f.Is(code.Member) {
			return false
		}
		if f.Name == "parse" {
			return true
		}
		for _, a := range n.Args() {
			found := false
			a.Walk(func(k *code.Node) bool {
				found = found || k.Is(code.Member) && k.Name == "parse"
				return !found
			})
			if found {
				return true
			}
		}
		n = f.Kid(0)
	}
	return false
}

// rustBound reports whether a path begins with a variable.
func (e *Eval) rustBound(n *code.Node, s *code.Scope) bool {
	if !n.Is(code.Member) {
		return false
	}
	for n.Is(code.Member) {
		n = n.Kid(0)
	}
	if n.Name == "self" {
		return true
	}
	if after := s.File.Src[min(int(n.End), len(s.File.Src)):]; bytes.HasPrefix(after, []byte("::")) { // a module, whatever variables are called
		return false
	}
	for x := s; x != nil; x = x.Parent {
		if bs := x.Names[n.Name]; len(bs) > 0 && x.Class == nil || len(bs) > 0 && x.Func != nil {
			return bs[0].Kind != "class" && bs[0].Kind != "import"
		}
	}
	return false
}

// rustSets is the method of the tree that sets the field of a variable: it is called on
// that variable in the same function; empty where there is none.
func (e *Eval) rustSets(n *code.Node, s *code.Scope) string {
	of := n.Kid(0)
	if !of.Is(code.Name) || of.Name == "self" {
		return ""
	}
	for _, call := range s.File.Calls {
		callee := call.Node.Kid(0)
		if call.Scope.Func != s.Func || !callee.Is(code.Member) || !callee.Kid(0).Is(code.Name) || callee.Kids[0].Name != of.Name {
			continue
		}
		for _, f := range e.rustFiles(s.File) {
			for _, set := range f.Sets {
				if fn := set.Scope.Func; fn != nil && fn.Name == callee.Name && set.Node.Is(code.Member) && set.Node.Name == n.Name && set.Node.Kid(0).Is(code.Name) && set.Node.Kids[0].Name == "self" {
					return callee.Name
				}
			}
		}
	}
	return ""
}

// rustImports reports whether a file uses something of a module.
func (e *Eval) rustImports(f *code.File, module string) bool {
	for _, i := range f.Imports {
		if strings.Contains("::"+i.Node.Name+"::", "::"+module+"::") {
			return true
		}
	}
	return false
}

// rustIP makes the text of an address of its four numbers.
func rustIP(v *Value, at place.Span) *Value {
	if v.Kind != List || len(v.Kids) != 4 {
		return v
	}
	var parts []*Value
	for i, k := range v.Kids {
		if i > 0 {
			parts = append(parts, text(".", at))
		}
		if k.Kind == Num {
			k = text(strconv.FormatFloat(k.Num, 'f', -1, 64), k.At)
		}
		parts = append(parts, k)
	}
	return Concat(parts...)
}

// RustIP makes the text of an address of the list of its four numbers.
func RustIP(v *Value) *Value { return rustIP(v, v.At) }

// rustFunction calls a function of the tree by its path: port(), config::port(),
// Config::from_env(), and methods, whose object is the first argument.
func (e *Eval) rustFunction(path string, n *code.Node, self *Value, s *code.Scope, c *context) *Value {
	parts := strings.Split(path, ".")
	last, owner := parts[len(parts)-1], ""
	if len(parts) > 1 {
		owner = parts[len(parts)-2]
	}
	if owner == "Self" && s.Class != nil {
		owner = s.Class.Name
	}
	if self != nil && owner == "" {
		return nil
	}
	call := func(f *code.File, fn *code.Node) *Value {
		args, _ := e.args(n, s, c)
		if self != nil {
			args = append([]*Value{self}, args...)
		}
		r := &ref{file: f, node: fn, scope: f.Top}
		if inside := f.Funcs[fn]; inside != nil && inside.Parent != nil {
			r.scope = inside.Parent
		}
		return e.invoke(&Value{Kind: Func, Text: last, At: f.At(fn), ref: r}, args, nil, c).with(Step{f.At(fn), "fn " + last})
	}
	typed := owner != "" && owner[0] >= 'A' && owner[0] <= 'Z'
	for _, f := range e.rustFiles(s.File) {
		var found *code.Node
		f.Body.Walk(func(k *code.Node) bool {
			switch {
			case found != nil:
				return false
			case k.Is(code.Class) && typed:
				if k.Name == owner {
					for _, m := range k.Kid(1).Kids {
						if m.Is(code.Func) && m.Name == last {
							found = m
						}
					}
				}
				return false
			case k.Is(code.Class):
				return false
			case k.Is(code.Func):
				if !typed && k.Name == last && (owner == "" && f == s.File || owner != "" || e.rustUses(s.File, last)) {
					found = k
				}
				return false
			}
			return true
		})
		if found != nil {
			return call(f, found)
		}
	}
	return nil
}

// rustFiles lists the files of Rust, the one at hand first.
func (e *Eval) rustFiles(first *code.File) []*code.File {
	list := []*code.File{first}
	for _, f := range e.Loader.Loaded() {
		if f != first && f.Lang == code.Rust && f.Body != nil {
			list = append(list, f)
		}
	}
	return list
}

// rustUses reports whether a use declaration brings a name in.
func (e *Eval) rustUses(f *code.File, name string) bool {
	for _, i := range f.Imports {
		if strings.HasSuffix(i.Node.Name, "::"+name) || strings.Contains(f.Text(i.Node), name) {
			return true
		}
		// A list in braces is not kept: what is named in the line counts.
		end := strings.IndexByte(string(f.Src[i.Node.Off:]), ';')
		if end > 0 && strings.Contains(string(f.Src[i.Node.Off:int(i.Node.Off)+end]), name) || end > 0 && strings.Contains(string(f.Src[i.Node.Off:int(i.Node.Off)+end]), "*") {
			return true
		}
	}
	return false
}

// rustStruct finds a struct by its name.
func (e *Eval) rustStruct(path string) (*code.Node, *code.File) {
	name := Tail(path, 1)
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Rust || f.Body == nil {
			continue
		}
		for _, k := range f.Body.Kids {
			if k.Is(code.Class) && k.Name == name && k.Alias == "struct" {
				return k, f
			}
		}
	}
	return nil, nil
}

// rustStructDefault is Type::default() where the fields' types alone give it.
func (e *Eval) rustStructDefault(path string, _ *code.File) *Value {
	if !strings.HasSuffix(path, ".default") || path == "Default.default" {
		return nil
	}
	cls, f := e.rustStruct(strings.TrimSuffix(path, ".default"))
	if cls == nil {
		return nil
	}
	o := &Value{Kind: Object, Text: cls.Name, At: f.At(cls)}
	for _, b := range cls.Kid(1).Kids {
		if !b.Is(code.Bind) {
			continue
		}
		var v *Value
		switch b.Alias {
		case "String":
			v = text("", f.At(b))
		case "u16", "u32", "usize", "i32", "u64":
			v = number(0, f.At(b))
		case "bool":
			v = boolean(false, f.At(b))
		case "Option":
			v = &Value{Kind: Null, At: f.At(b)}
		default:
			v = unknown("the default of "+b.Alias, f.At(b))
		}
		o.Keys, o.Kids = append(o.Keys, b.Kid(0).Name), append(o.Kids, v)
	}
	return o
}

// rustMember gives the field of what a parser of clap makes, of what envy
// reads, and the constants of addresses; nil for any other.
func (e *Eval) rustMember(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	switch path := n.Dotted(); {
	case strings.HasSuffix(path, "Ipv4Addr.UNSPECIFIED"):
		return text("0.0.0.0", at)
	case strings.HasSuffix(path, "Ipv4Addr.LOCALHOST"):
		return text("127.0.0.1", at)
	case strings.HasSuffix(path, "Ipv6Addr.UNSPECIFIED"):
		return text("::", at)
	case strings.HasSuffix(path, "Ipv6Addr.LOCALHOST"):
		return text("::1", at)
	case path != "" && !e.rustBound(n, s):
		last := Tail(path, 1)
		owner := strings.TrimSuffix(path, "."+last)
		owner = Tail(owner, 1)
		if owner == "Self" && s.Class != nil {
			owner = s.Class.Name
		}
		for _, f := range e.rustFiles(s.File) {
			if v := e.topOf(f, last); v != nil && owner[0] >= 'a' {
				return v
			}
			for _, k := range f.Body.Kids { // a constant of a type
				if !k.Is(code.Class) || k.Name != owner {
					continue
				}
				for _, m := range k.Kid(1).Kids {
					if m.Is(code.Bind) && m.Kid(0).Name == last && m.Kid(1) != nil {
						return e.expr(m.Kids[1], f.Inside[k], nil)
					}
				}
				if k.Alias == "enum" {
					return &Value{Kind: External, Text: "enum " + owner + "." + last, At: at}
				}
			}
		}
	}
	if method := e.rustSets(n, s); method != "" {
		return unknown("what "+method+" makes of "+n.Name, at)
	}
	base := e.expr(n.Kid(0), s, c)
	switch {
	case base.Kind == External && base.Text == "clap" && base.ref != nil:
		for _, b := range base.ref.node.Kid(1).Kids {
			if b.Is(code.Bind) && b.Kid(0).Name == n.Name {
				return e.clapField(b, base.ref.file)
			}
		}
		for _, b := range base.ref.node.Kid(1).Kids { // flattened into it
			if !b.Is(code.Bind) || b.Kid(0).Name != n.Name {
				continue
			}
		}
	case base.Kind == List && len(base.Kids) > 0 && strings.Trim(n.Name, "0123456789") == "": // a tuple
		if i, err := strconv.Atoi(n.Name); err == nil && i < len(base.Kids) {
			return base.Kids[i]
		}
	}
	return nil
}

// rustMatches tests a value against a pattern of matches!: Ok(…), Some(…), a text
// or a number, a name, and these with | between them; nil for any other.
func (e *Eval) rustMatches(v *Value, p *code.Node, s *code.Scope, c *context, at place.Span) *Value {
	holds := func(v *Value) *Value { return op("holds", true, at, v) }
	switch {
	case p.Is(code.Binary) && p.Name == "|":
		a, b := e.rustMatches(v, p.Kid(0), s, c, at), e.rustMatches(v, p.Kid(1), s, c, at)
		if a == nil || b == nil {
			return nil
		}
		return op("||", true, at, a, b)
	case p.Is(code.Call) && len(p.Kids) == 2:
		switch p.Kid(0).Dotted() {
		case "Ok", "Some":
			inner := e.rustMatches(v, p.Kids[1], s, c, at)
			if inner == nil {
				return nil
			}
			return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{holds(v), inner, boolean(false, at)}}
		case "Err":
			if p.Kids[1].Is(code.Name) {
				return op("!", true, at, holds(v))
			}
		}
	case p.Is(code.Name) && p.Name == "None":
		return op("!", true, at, holds(v))
	case p.Is(code.Name) && p.Name != "" && (p.Name == "_" || p.Name[0] >= 'a'):
		return boolean(true, at)
	case p.Is(code.String), p.Is(code.Number):
		return op("==", true, at, v, e.expr(p, s, c))
	}
	return nil
}

// envy is a struct whose fields are read from the environment, each by its name in
// capitals behind a prefix; serde says what stands where one is not set (envy 0.4,
// serde 1, "Field attributes").
func (e *Eval) envy(name, prefix string, at place.Span) *Value {
	cls, f := e.rustStruct(name)
	if name == "" || cls == nil {
		return &Value{Kind: External, Text: "envy", At: at, Kids: []*Value{text(prefix, at)}}
	}
	o := &Value{Kind: Object, Text: cls.Name, At: f.At(cls)}
	for _, b := range cls.Kid(1).Kids {
		if !b.Is(code.Bind) {
			continue
		}
		field := b.Kid(0).Name
		v := &Value{Kind: Env, Text: strings.ToUpper(prefix + field), Unset: Raises, At: f.At(b)}
		var def *Value
		if b.Alias == "Option" {
			def = &Value{Kind: Null, At: v.At}
		}
		for _, m := range b.Kids[2:] {
			if m.Kid(0).Dotted() != "serde" {
				continue
			}
			for _, a := range m.Args() {
				switch given := a.Kid(0); a.Name {
				case "rename":
					if given.Is(code.String) {
						v.Text = strings.ToUpper(prefix + given.Name)
					}
				case "default":
					if def = rustZero(b.Alias, v.At); given.Is(code.String) && !a.Is(code.Name) {
						def = e.rustNamed(given.Name, f)
					}
				case "flatten", "alias", "deserialize_with", "with", "skip":
					def = unknown("a field of its own form", v.At)
				}
			}
		}
		w := v
		if rustNumbers[b.Alias] {
			w = op("unwrap", true, v.At, op("rustparse", true, v.At, v))
		}
		if def != nil {
			v.Unset = ReadsNull
			w = &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{op("holds", true, v.At, v), w, def}}
		}
		o.Keys, o.Kids = append(o.Keys, field), append(o.Kids, w)
	}
	return o
}

// rustNumbers are the types of whole numbers.
var rustNumbers = map[string]bool{"u8": true, "u16": true, "u32": true, "u64": true, "usize": true, "i8": true, "i16": true, "i32": true, "i64": true, "isize": true}

// rustZero is the default of a type.
func rustZero(name string, at place.Span) *Value {
	switch {
	case name == "String":
		return text("", at)
	case name == "bool":
		return boolean(false, at)
	case name == "Option":
		return &Value{Kind: Null, At: at}
	case rustNumbers[name]:
		return number(0, at)
	}
	return unknown("the default of "+name, at)
}

// rustNamed is what a function gives that an attribute names by its path.
func (e *Eval) rustNamed(path string, f *code.File) *Value {
	last := Tail(strings.ReplaceAll(path, "::", "."), 1)
	for _, g := range e.rustFiles(f) {
		for fn := range g.Funcs {
			if fn.Is(code.Func) && fn.Name == last {
				return e.invoke(&Value{Kind: Func, Text: last, At: g.At(fn), ref: &ref{file: g, node: fn, scope: g.Top}}, nil, nil, nil)
			}
		}
	}
	return unknown("what "+path+" gives", place.Span{})
}

// clapField gives a field of a derived parser: the option, the variable, the
// default (clap 4, "Derive Reference").
func (e *Eval) clapField(b *code.Node, f *code.File) *Value {
	at := f.At(b)
	name := b.Kid(0).Name
	var flags []string
	var def *Value
	variable := ""
	for _, m := range b.Kids[2:] {
		switch m.Kid(0).Dotted() {
		case "arg", "clap", "structopt":
		case "command":
			return &Value{Kind: External, Text: "clap", At: at, ref: e.clapFlat(b)}
		default:
			continue
		}
		for _, a := range m.Args() {
			key, v := a.Name, a.Kid(0)
			if a.Is(code.Name) {
				v = nil
			}
			switch key {
			case "long":
				long := strings.ReplaceAll(name, "_", "-")
				if v.Is(code.String) {
					long = v.Name
				}
				flags = append(flags, "--"+long)
			case "short":
				short := name[:1]
				if v.Is(code.String) {
					short = v.Name
				}
				flags = append(flags, "-"+short)
			case "env":
				variable = strings.ToUpper(name)
				if v.Is(code.String) {
					variable = v.Name
				}
			case "default_value", "default_value_t":
				if v != nil {
					def = e.expr(v, f.Top, nil)
				}
			case "flatten":
				return &Value{Kind: External, Text: "clap", At: at, ref: e.clapFlat(b)}
			}
		}
	}
	v := e.given(flags)
	if len(flags) == 0 && len(e.Args) > 0 && e.Args[0].Kind == Str && !strings.HasPrefix(e.Args[0].Text, "-") {
		v = e.Args[0] // by its place
	}
	if v == nil && variable != "" {
		v = &Value{Kind: Env, Text: variable, Unset: ReadsNull, At: at}
		if def != nil {
			v = op("unset", true, at, v, def)
		} else if b.Alias != "Option" {
			v.Unset = Raises
		}
	}
	switch {
	case v == nil && def != nil:
		v = def
	case v == nil && b.Alias == "Option":
		return &Value{Kind: Null, At: at}
	case v == nil && b.Alias == "bool":
		return boolean(false, at)
	case v == nil:
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	}
	switch b.Alias {
	case "u16", "u32", "usize", "i32", "u64":
		return op("rustparse", true, at, v)
	}
	return v
}

// clapArg is an argument of clap's builder: what is given, its variable, its
// default; nil where none of that name is defined (clap 4, "Arg").
func (e *Eval) clapArg(id string, at place.Span) *Value {
	var made *code.Node
	for _, kind := range []string{"new", "with_name"} {
		for _, site := range e.calls(kind) {
			if site.Scope.File.Lang == code.Rust && strings.HasSuffix(site.Node.Kid(0).Dotted(), "Arg."+kind) && site.Node.Kid(1).Is(code.String) && site.Node.Kids[1].Name == id {
				made = site.Node
			}
		}
	}
	if made == nil {
		return nil
	}
	with := func(name string) (text *Value, found bool) {
		for _, site := range e.calls(name) {
			for b := site.Node; b.Is(code.Call); b = b.Kid(0).Kid(0) {
				if b == made {
					if site.Node.Kid(1) != nil {
						text = e.Expr(site.Node.Kids[1], site.Scope)
					}
					return text, true
				}
			}
		}
		return nil, false
	}
	var flags []string
	for dash, name := range map[string]string{"--": "long", "-": "short"} {
		if v, ok := with(name); ok && v.literal() != "" {
			flags = append(flags, dash+v.Text)
		}
	}
	v := e.given(flags)
	if v == nil {
		v, _ = with("default_value")
		if v == nil {
			v = &Value{Kind: Null, At: at}
		}
		if name, ok := with("env"); ok && name.literal() != "" {
			v = op("unset", true, at, &Value{Kind: Env, Text: name.Text, Unset: ReadsNull, At: at}, v)
		}
	}
	return v
}

func (e *Eval) clapFlat(b *code.Node) *ref {
	if cls, f := e.rustStruct(b.Alias); cls != nil {
		return &ref{file: f, node: cls, scope: f.Top}
	}
	return nil
}

// rustFormat evaluates format!("{}:{port}", host) (std::fmt).
func (e *Eval) rustFormat(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	if !n.Kid(1).Is(code.String) {
		return unknown("a text whose form is not written out", at)
	}
	args, keys := e.args(n, s, c)
	form := n.Kids[1].Name
	args = args[1:]
	var parts []*Value
	var b strings.Builder
	flush := func() {
		if b.Len() > 0 {
			parts = append(parts, text(b.String(), at))
			b.Reset()
		}
	}
	next := 0
	for i := 0; i < len(form); i++ {
		switch {
		case form[i] == '{' && i+1 < len(form) && form[i+1] == '{', form[i] == '}' && i+1 < len(form) && form[i+1] == '}':
			b.WriteByte(form[i])
			i++
		case form[i] == '{':
			end := strings.IndexByte(form[i:], '}')
			if end < 0 {
				return unknown("a text whose form is not read", at)
			}
			flush()
			name, how, _ := strings.Cut(form[i+1:i+end], ":")
			i += end
			if how = strings.TrimSpace(how); how != "" && how != "?" {
				return unknown("a text in columns", at)
			}
			var v *Value
			switch k, err := strconv.Atoi(name); {
			case name == "":
				if next < len(args) {
					v = args[next]
				}
				next++
			case err == nil:
				if k < len(args) {
					v = args[k]
				}
			case keys[name] != nil:
				v = keys[name]
			default:
				v = e.expr(&code.Node{Kind: code.Name, Name: name, Off: n.Off, End: n.End}, s, c)
			}
			if v == nil {
				return unknown("a text that needs more than it is given", at)
			}
			if v.Kind == List && len(v.Kids) == 2 { // an address
				v = Concat(v.Kids[0], text(":", at), v.Kids[1])
			}
			parts = append(parts, v)
		default:
			b.WriteByte(form[i])
		}
	}
	flush()
	if len(parts) == 0 {
		return text("", at)
	}
	for i, p := range parts {
		if p.Kind == Num {
			parts[i] = text(strconv.FormatFloat(p.Num, 'f', -1, 64), p.At)
		}
	}
	return Concat(parts...)
}
