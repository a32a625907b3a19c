package value

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// goCall evaluates what the standard library of Go does with texts, flags and
// second results (documentation of the packages, Go 1.26); nil for any other
// call.
func (e *Eval) goCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if callee.Is(code.Name) && callee.Name == code.SecondResult {
		return e.second(n.Kid(1), s, c)
	}
	if callee.Is(code.Name) && callee.Name == code.EmbeddedFile && n.Kid(1).Is(code.String) {
		return &Value{Kind: External, Text: embedded, At: at, Kids: []*Value{text(joined2(dirOf(s.File.Name), n.Kids[1].Name), at)}}
	}
	if callee.Is(code.Name) && callee.Name == "append" && len(n.Kids) > 2 {
		list := e.expr(n.Kids[1], s, c)
		if list.Kind == Null || list.Kind == Undef {
			list = &Value{Kind: List, At: at}
		}
		if list.Kind == List || list.Kind == Cond {
			more := &Value{Kind: List, At: at}
			for _, a := range n.Kids[2:] {
				more.Kids = append(more.Kids, e.expr(a, s, c))
			}
			return joinedLists(list, more)
		}
	}
	if callee.Is(code.Name) && (callee.Name == "string" || conversions[callee.Name] == "int") && len(n.Kids) == 2 {
		v := e.expr(n.Kids[1], s, c)
		if callee.Name == "string" {
			return v
		}
		return op("int", true, at, v)
	}
	if v := e.goLibrary(n, s, c); v != nil {
		return v
	}
	if !callee.Is(code.Name) && (!callee.Is(code.Member) || !callee.Kid(0).Is(code.Name)) {
		return nil
	}
	fn := e.expr(callee, s, c)
	if fn.Kind != External {
		return nil
	}
	arg := func(i int) *Value {
		if i+1 < len(n.Kids) {
			return e.expr(n.Kids[i+1], s, c)
		}
		return unknown("a missing argument", at)
	}
	if textMethods[fn.Text] != "" {
		args, _ := e.args(n, s, c)
		if v := textCall(fn.Text, args, code.Go, at); v != nil {
			return v
		}
	}
	if code.ErrorMakers[path.Base(fn.Text)] {
		return &Value{Kind: External, Text: anError, At: at}
	}
	switch fn.Text {
	case "strings.Fields":
		return op("split", true, at, arg(0))
	case "fmt.Sprintf":
		format := arg(0)
		if format.Kind != Str {
			return unknown("a text whose form is made while the program runs", at)
		}
		var args []*Value
		for i := range len(n.Kids) - 2 {
			args = append(args, arg(i+1))
		}
		return percent(strings.NewReplacer("%v", "%s", "%q", "\"%s\"").Replace(format.Text), args, at)
	case "strconv.Atoi", "strconv.ParseInt", "strconv.ParseUint": // what is no number gives 0, and an error
		return op("||", false, at, op("Number", false, at, arg(0)), number(0, at))
	case "fmt.Sprint":
		var args []*Value
		for i := range len(n.Kids) - 1 {
			args = append(args, arg(i))
		}
		return Concat(args...)
	case "net.JoinHostPort":
		host := arg(0)
		if host.Kind == Str && strings.Contains(host.Text, ":") {
			host = text("["+host.Text+"]", host.At)
		}
		return Concat(host, text(":", at), arg(1))
	case "cmp.Or":
		v := arg(0)
		for i := 1; i < len(n.Kids)-1; i++ {
			v = op("||", false, at, v, arg(i))
		}
		return v
	case "strings.TrimSpace":
		return op("strip", true, at, arg(0))
	case "strings.ToLower":
		return op("lower", true, at, arg(0))
	case "os.ExpandEnv":
		if a := arg(0); a.Kind == Str {
			return expanded(a.Text, at)
		}
	}
	return nil
}

// embedded is the content of a file that go build puts into the program (package
// embed).
const embedded = "embed.ReadFile()"

// second is the second result of a call: whether a variable is set, or what a
// conversion says of its text.
func (e *Eval) second(call *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(call)
	if call.Is(code.Index) { // of a map: whether the key is there
		base, k := e.expr(call.Kid(0), s, c), e.expr(call.Kid(1), s, c)
		if base.Kind != Object || len(base.Keys) > 24 {
			return unknown("whether a key is in a map", at)
		}
		if k.Kind == Str && !slices.Contains(base.Keys, "...") {
			return base.Get(k.Text).present(at)
		}
		keys := &Value{Kind: List, At: at}
		for _, name := range base.Keys {
			keys.Kids = append(keys.Kids, text(name, base.At))
		}
		return op("in", true, at, k, keys)
	}
	if !call.Is(code.Call) {
		return unknown("the second of two results", at)
	}
	fn := e.called(call.Kid(0), s, c)
	if fn.Kind == Func {
		args, keys := e.args(call, s, c)
		return e.result(1, fn, args, keys, c)
	}
	if fn.Kind != External || call.Kid(1) == nil {
		return unknown("the second of two results", at)
	}
	arg := e.expr(call.Kids[1], s, c)
	switch fn.Text {
	case "os.ReadFile", "io/ioutil.ReadFile", "os.Open":
		if e.goData(arg) != nil {
			return &Value{Kind: Null, At: at}
		}
	case "os.LookupEnv":
		if arg.Kind == Str {
			return op("isset", true, at, &Value{Kind: Env, Text: arg.Text, At: at})
		}
	case "strconv.Atoi", "strconv.ParseInt", "strconv.ParseUint":
		return &Value{Kind: Cond, At: at, Kids: []*Value{op("digits", true, at, arg), {Kind: Null, At: at}, {Kind: External, Text: anError, At: at}}}
	}
	if strings.HasPrefix(fn.Text, "net.") || strings.HasPrefix(fn.Text, "net/http.") {
		return &Value{Kind: Null, At: at} // that it works is what is asked
	}
	return unknown("the second of two results", at)
}

// goFlag is a flag of the command line (packages flag and pflag): -name value,
// -name=value with one or two dashes, its letter; without it the default.
func (e *Eval) goFlag(name, def *Value, number bool, n *code.Node, s *code.Scope, short ...string) *Value {
	at := s.File.At(n)
	for _, letter := range short {
		if letter == "" {
			continue
		}
		if v := e.given([]string{"-" + letter}); v != nil {
			if number {
				return op("int", true, at, v)
			}
			return v
		}
	}
	if name.Kind != Str {
		return unknown("a flag whose name is made while the program runs", at)
	}
	for i, a := range slices.Backward(e.Args) { // the last counts
		var v *Value
		for _, dash := range []string{"-", "--"} {
			head, rest := a, []*Value(nil)
			if a.Kind == Op && a.Text == "concat" && len(a.Kids) > 0 { // -port=$PORT
				head, rest = a.Kids[0], a.Kids[1:]
			}
			if head.Kind != Str {
				break
			}
			if tail, ok := strings.CutPrefix(head.Text, dash+name.Text+"="); ok {
				v = text(tail, a.At)
				if rest != nil {
					v = Concat(append([]*Value{v}, rest...)...)
				}
			} else if rest == nil && head.Text == dash+name.Text && i+1 < len(e.Args) {
				v = e.Args[i+1]
			}
		}
		switch {
		case v == nil:
		case number:
			return op("int", true, at, v)
		default:
			return v
		}
	}
	return def
}

// goMethod finds the method of an object by the name of its type; nil where
// there is none, or more than one type of that name.
func (e *Eval) goMethod(base *Value, name string) *Value {
	if base.Text == "" {
		return nil
	}
	typ := Tail(base.Text, 1)
	var found *Value
	for _, m := range e.goMethods(name) {
		if m.node.Alias == typ {
			if found != nil {
				return nil
			}
			found = &Value{Kind: Func, Text: name, At: m.file.At(m.node), ref: &ref{file: m.file, node: m.node, scope: m.file.Top, this: base}}
		}
	}
	return found
}

// goMethods lists the methods of a name, of any type. Each file is gone through
// once.
func (e *Eval) goMethods(name string) []method {
	files := e.Loader.Loaded()
	for ; e.listed < len(files); e.listed++ {
		f := files[e.listed]
		if f.Lang != code.Go || f.Body == nil {
			continue
		}
		for _, n := range f.Body.Kids {
			if n.Is(code.Func) && n.Flag&code.Method != 0 {
				e.ofGo[n.Name] = append(e.ofGo[n.Name], method{f, n})
			}
		}
	}
	return e.ofGo[name]
}

// literalKind reports whether a value is of no type that a program declares.
func literalKind(v *Value) bool {
	switch v.Kind {
	case Env, Op, Cond, Str, Num:
		return false
	}
	return true
}

// namedMethod finds a method of a type that is a number or a text by another
// name: the only one of its name; nil where there is none, or more.
func (e *Eval) namedMethod(base *Value, name string) *Value {
	var found *Value
	for _, m := range e.goMethods(name) {
		if cls, _ := e.goStruct(m.node.Alias); cls != nil {
			continue
		}
		if found != nil {
			return nil
		}
		found = &Value{Kind: Func, Text: name, At: m.file.At(m.node), ref: &ref{file: m.file, node: m.node, scope: m.file.Top, this: base}}
	}
	return found
}

// method is a method of Go and the file that it stands in.
type method struct {
	file *code.File
	node *code.Node
}

// receiver is where the parameter of a method stands that is the object, by
// its address; -1 where it is a copy.
func receiver(fn *code.Node) int {
	for i, p := range fn.Kid(0).Kids {
		if p.Flag&code.Star != 0 && p.Flag&code.Address != 0 {
			return i
		}
	}
	return -1
}

// afterMethod gives an object as one of its methods leaves it; nil where that
// writes nothing into it.
func (e *Eval) afterMethod(now *Value, n *code.Node, s *code.Scope, c *context) *Value {
	m := e.goMethod(now, n.Kid(0).Name)
	if m == nil {
		return nil
	}
	which := receiver(m.ref.node)
	if which < 0 {
		return nil
	}
	args, _ := e.args(n, s, c)
	within, r := *now, ref{}
	if now.ref != nil {
		r = *now.ref
	}
	r.done = append(slices.Clone(r.done), m.ref.node)
	within.ref = &r
	return e.writes(m, which, &within, args, c)
}

// goSet gives a field of an object as a method of its type leaves it; nil where
// none sets it, unknown where several do.
func (e *Eval) goSet(base *Value, field string, at place.Span) *Value {
	typ := Tail(base.Text, 1)
	if typ == "" || e.busy([2]string{typ, field}) {
		return nil
	}
	e.active[[2]string{typ, field}] = true
	defer delete(e.active, [2]string{typ, field})
	v := base.Get(field)
	if v == nil {
		v = text("", at)
	}
	var method *code.Node
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Go || f.Body == nil {
			continue
		}
		e.total += len(f.Sets) / 32 // what is looked at counts, too
		for _, site := range f.Sets {
			if site.Value == nil || !site.Node.Is(code.Member) || site.Node.Name != field || site.Scope == nil || site.Scope.Func == nil {
				continue
			}
			fn := site.Scope.Func
			if fn.Flag&code.Method == 0 || fn.Alias != typ || len(e.sites(fn.Name, f.Name)) == 0 {
				continue
			}
			if base.ref != nil && slices.Contains(base.ref.done, fn) {
				continue // it is in there
			}
			if method != nil && method != fn {
				return unknown("the field "+field+" is set by several methods", at)
			}
			method = fn
			now := *base // the object as it is before this line
			now.Keys, now.Kids = append(append([]string(nil), base.Keys...), field), append(append([]*Value(nil), base.Kids...), v)
			now.Text = "" // its fields are as they are
			ctx := &context{fn: fn, this: &now}
			w := e.expr(site.Value, site.Scope, ctx).with(Step{f.At(site.Node), f.Between(site.Node.Off, site.Value.End, 72)})
			for i := len(site.Guards) - 1; i >= 0; i-- {
				w = e.guarded(site.Guards[i], w, v, ctx)
			}
			v = w
		}
	}
	if method == nil {
		return nil
	}
	return v
}

// elsewhere adds to the ways in which a variable of a package gets its value
// those that stand in functions of its other files.
func (e *Eval) elsewhere(bs []*code.Binding, name string, f *code.File) []*code.Binding {
	files := e.Loader.Loaded()
	for ; e.assigning < len(files); e.assigning++ {
		g := files[e.assigning]
		if g.Lang != code.Go {
			continue
		}
		dir := g.Name[:strings.LastIndexByte(g.Name, '/')+1]
		var found []*code.Binding
		for _, s := range g.Funcs {
			for _, list := range s.Names {
				if list[0].Kind != "" || declares(s.Parent, list[0].Name) != nil {
					continue
				}
				for _, b := range list {
					if w := *b; w.Value != nil {
						w.From = s
						found = append(found, &w)
					}
				}
			}
		}
		slices.SortFunc(found, func(a, b *code.Binding) int { return int(a.Off - b.Off) })
		for _, b := range found {
			e.outside[dir+b.Name] = append(e.outside[dir+b.Name], b)
		}
	}
	for _, b := range e.outside[f.Name[:strings.LastIndexByte(f.Name, '/')+1]+name] {
		if b.From.File != f {
			bs = append(bs[:len(bs):len(bs)], b)
		}
	}
	return bs
}

// samePackage looks a name up in the other files of a Go package.
func (e *Eval) samePackage(name string, f *code.File) *Value {
	dir := f.Name[:strings.LastIndexByte(f.Name, '/')+1]
	for _, o := range e.Loader.Loaded() {
		if o == f || o.Lang != code.Go || o.Name[:strings.LastIndexByte(o.Name, '/')+1] != dir || o.Top == nil {
			continue
		}
		if bs := o.Top.Names[name]; len(bs) > 0 {
			if v := e.bindings(e.elsewhere(bs, name, o), o.Top, nil, 0); v != nil {
				return v
			}
		}
	}
	return nil
}
