package trace

import (
	"maps"
	"math"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/value"
)

// eval says what an expression comes to.
func (m *machine) eval(n *code.Node, s *scope) (any, error) {
	v, _, err := m.chain(n, s)
	if err != nil {
		return nil, err
	}
	switch x := v.(type) {
	case string:
		err = m.use(len(x))
	case *list:
		if !n.Is(code.Name) && !n.Is(code.Member) {
			err = m.use(len(x.items))
		}
	case *object:
		if n.Is(code.Object) || n.Is(code.Call) {
			err = m.use(len(x.keys))
		}
	}
	if err != nil {
		return nil, err
	}
	if o, ok := v.(*opaque); ok && (n.Is(code.Call) || n.Is(code.Member) || n.Is(code.Index)) && (m.calledBack && o.path == "" || strings.Contains(o.path, "()") || strings.HasPrefix(o.path, "tornado.options.options.")) {
		if x, ok := m.ask(n, s); ok {
			return x, nil
		}
		if strings.Contains(o.path, ".parse_args()") && s.static != nil && m.asking().Expr(n, s.static).Under(m.now()).Raise {
			return nil, &exit{} // an argument that its type does not take
		}
	}
	return v, nil
}

// ask is what package value says of an expression.
func (m *machine) ask(n *code.Node, s *scope) (any, bool) {
	if s.static == nil || m.steps > maxSteps/2 {
		return nil, false
	}
	v := m.asking().Expr(n, s.static)
	switch v.Kind {
	case value.External, value.Unknown, value.Func, value.Class, value.Instance, value.Module, value.EnvMap:
		if !v.Failed() {
			return nil, false
		}
	}
	x, err := m.fromValue(v, 0)
	if err != nil {
		return nil, false
	}
	return m.fitted(x), true
}

// chain is eval for what ?. may cut short: then all of the chain is nothing.
func (m *machine) chain(n *code.Node, s *scope) (v any, cut bool, err error) {
	if n == nil {
		return undefined, false, nil
	}
	if err := m.step(); err != nil {
		return nil, false, err
	}
	if m.depth++; m.depth > maxDepth*3 {
		return nil, false, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	if s.ruby() {
		if v, done, err := m.rbNode(n, s); done || err != nil {
			return v, false, err
		}
	}
	if s.java() {
		if v, done, err := m.jvNode(n, s); done || err != nil {
			return v, false, err
		}
	}
	if s.php() {
		if v, done, err := m.phNode(n, s); done || err != nil {
			return v, false, err
		}
	}
	nothing := func(v any) bool { return v == nil || v == any(undefined) }
	switch n.Kind {
	case code.Member:
		base, cut, err := m.chain(n.Kid(0), s)
		if err != nil || cut {
			return base, cut, err
		}
		if n.Flag&code.OptionalOp != 0 && nothing(base) {
			return undefined, true, nil
		}
		v, err := m.key(base, n.Name, s, n)
		return v, false, err
	case code.Index:
		base, cut, err := m.chain(n.Kid(0), s)
		if err != nil || cut {
			return base, cut, err
		}
		if n.Flag&code.OptionalOp != 0 && nothing(base) {
			return undefined, true, nil
		}
		v, err := m.index(base, n, s)
		return v, false, err
	case code.Call:
		return m.callNode(n, s)
	}
	v, err = m.plain(n, s)
	return v, false, err
}

func (m *machine) plain(n *code.Node, s *scope) (any, error) {
	py := s.python()
	switch n.Kind {
	case code.String:
		return n.Name, nil
	case code.Number:
		if strings.HasSuffix(n.Name, "n") && javascript(s.module.file.Lang) {
			return dontKnow("an integer of any size"), nil
		}
		text := strings.TrimSuffix(strings.ReplaceAll(n.Name, "_", ""), "n")
		if i, err := strconv.ParseInt(text, 0, 64); err == nil {
			if !javascript(s.module.file.Lang) {
				return integer(i), nil
			}
			return float64(i), nil
		}
		f, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return nil, giveUp("a number that is not understood")
		}
		return f, nil
	case code.True, code.False:
		return n.Kind == code.True, nil
	case code.Null:
		return nil, nil
	case code.Undefined:
		return undefined, nil
	case code.Template:
		var b strings.Builder
		for _, k := range n.Kids {
			v, err := m.eval(k, s)
			if err != nil {
				return nil, err
			}
			if o, ok := v.(*opaque); ok {
				return dontKnow("a text with " + o.String()), nil
			}
			if javascript(s.module.file.Lang) {
				if v, err = m.jsPrimitive(v, "string", s, k); err != nil {
					return nil, err
				}
				if o, ok := v.(*opaque); ok {
					return dontKnow("a text with " + o.String()), nil
				}
			}
			if py {
				if !k.Is(code.String) || code.InBraces(s.module.file, k) {
					if v, err = m.specified(k, v, s); err != nil || !known(v) {
						return v, err
					}
				}
				b.WriteString(show(v))
			} else {
				b.WriteString(show(v))
			}
			if b.Len() > maxText {
				return nil, spent("a text that is too long")
			}
		}
		return b.String(), nil
	case code.Unknown:
		if n.Name == code.Asserted {
			return m.eval(n.Kid(0), s)
		}
		if n.Name == code.Yield {
			return m.sent(py), m.yield(map[bool]any{true: nil, false: undefined}[py], n, s)
		}
		if strings.HasPrefix(n.Name, code.Pattern) {
			return &pattern{v: m.e.Expr(n, s.static)}, nil
		}
		if javascript(s.module.file.Lang) && s.module.file.Text(n) == "new.target" { // the class that is made one of
			for x := s; x != nil; x = x.up {
				if o, ok := x.this.(*object); ok {
					if o.class != nil && x.fn != nil && x.fn.name == "constructor" {
						return o.class, nil
					}
					return undefined, nil
				}
			}
		}
		if py && s.module.file.Text(n) == "..." {
			return &opaque{path: "Ellipsis"}, nil
		}
	case code.Name:
		return m.name(n, s)
	case code.New:
		return m.newNode(n, s)
	case code.Unary:
		return m.unary(n, s)
	case code.Binary:
		return m.binary(n, s)
	case code.Cond:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		yes, err := m.decide(v, s, n.Kid(0))
		if err != nil {
			return m.oneOf(err, s, n.Kid(1), n.Kid(2))
		}
		if yes {
			return m.eval(n.Kid(1), s)
		}
		return m.eval(n.Kid(2), s)
	case code.Assign:
		return m.assignment(n, s)
	case code.Object:
		return m.objectNode(n, s)
	case code.Array:
		if n.Name == code.LastOf {
			v := any(undefined)
			for _, k := range n.Kids {
				var err error
				if v, err = m.eval(k, s); err != nil {
					return nil, err
				}
			}
			return v, nil
		}
		l := &list{}
		if src := s.module.file.Src; py && int(n.Off) < len(src) {
			l.tuple = src[n.Off] != '[' && src[n.Off] != '{'
			l.set = src[n.Off] == '{'
		}
		for _, k := range n.Kids {
			if k.Is(code.Spread) {
				v, err := m.eval(k.Kid(0), s)
				if err != nil {
					return nil, err
				}
				items, err := m.items(v, s)
				if err != nil {
					return nil, err
				}
				l.items = append(l.items, items...)
			} else {
				v, err := m.eval(k, s)
				if err != nil {
					return nil, err
				}
				l.items = append(l.items, v)
			}
			if len(l.items) > maxItems {
				return nil, spent("a list that is too long")
			}
		}
		return l, nil
	case code.Func:
		if n.Name != "" && n.Flag&code.Method == 0 && javascript(s.module.file.Lang) { // it knows itself by its name (ECMAScript 2026, 15.2.5)
			in := s.inner()
			f := m.function(n, in)
			in.declare(n.Name, f)
			return f, nil
		}
		return m.function(n, s), nil
	case code.Class:
		return m.class(n, s)
	case code.Await:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		if n.Name == code.Yield && !s.awaiting() {
			return m.sent(py), m.yield(v, n, s)
		}
		return awaited(v)
	case code.Comp:
		v, err := m.comprehension(n, s)
		if opens(err) {
			return m.oneOf(err, s, n.Kids...)
		}
		return v, err
	case code.Keyword:
		return m.eval(n.Kid(0), s)
	case code.Markup:
		return dontKnow("markup"), nil
	}
	return nil, giveUp("code that is not followed: %s", s.module.file.Text(n))
}

// sent is what yield gives: what the one who asks for the next element hands over.
func (m *machine) sent(py bool) any {
	if py {
		return undefined
	}
	return dontKnow("what a generator is sent")
}

// yield hands on what a generator gives: it is run to its end at once.
func (m *machine) yield(v any, n *code.Node, s *scope) error {
	if len(m.yields) == 0 {
		return giveUp("what a generator gives")
	}
	l := m.yields[len(m.yields)-1]
	if src := s.module.file.Between(n.Off, n.End, 20); strings.HasPrefix(src, "yield*") || strings.HasPrefix(src, "yield from") {
		items, err := m.items(v, s)
		if err != nil {
			return err
		}
		l.items = append(l.items, items...)
	} else {
		l.items = append(l.items, v)
	}
	if len(l.items) > maxItems {
		return giveUp("a generator without an end")
	}
	return nil
}

// awaited is what a promise comes to.
func awaited(v any) (any, error) {
	for range 8 {
		if c, ok := v.(*coroutine); ok {
			x, err := c.wait()
			if err != nil {
				return nil, err
			}
			v = x
			continue
		}
		p, ok := v.(*promise)
		if !ok {
			break
		}
		if p.err != nil {
			return nil, p.err
		}
		v = p.v
	}
	return v, nil
}

func (m *machine) name(n *code.Node, s *scope) (any, error) {
	if c := s.find(n.Name); c != nil {
		return m.read(c)
	}
	if s.python() {
		if p := value.Starred(m.e.Loader, s.module.file, n.Name); p != "" {
			return m.outside(p), nil
		}
		if unset(n.Name, s) {
			return nil, certainly("NameError", "name '"+n.Name+"' is not defined")
		}
		return m.outside(n.Name), nil
	}
	switch n.Name {
	case "this":
		return s.this, nil
	case "super":
		if s.fn != nil && s.fn.home != nil {
			return &super{s.fn.home, s.this}, nil
		}
	case "NaN":
		return math.NaN(), nil
	case "Infinity":
		return math.Inf(1), nil
	case "arguments":
		for x := s; x != nil; x = x.up {
			if x.own && x.fn != nil && x.fn.node != nil && x.fn.node.Flag&code.Arrow == 0 {
				return &list{items: slices.Clone(x.given)}, nil
			}
		}
		return nil, giveUp("the arguments of a function as a whole")
	case "__filename":
		return root + "/" + s.module.file.Name, nil
	case "__dirname":
		return path.Dir(root + "/" + s.module.file.Name), nil
	case "globalThis", "global":
		return m.global(n.Name), nil
	case "exports":
		return s.module.whole, nil
	}
	if g := m.packages["globalThis"]; g != nil && g.props != nil { // what the program sets there is a name everywhere
		if v, ok := g.props.get(n.Name); ok {
			if o, outside := v.(*opaque); !outside || !strings.HasPrefix(o.path, "global") {
				return v, nil
			}
		}
	}
	return m.package1(n.Name), nil
}

// global is the global object, by one of its two names.
func (m *machine) global(name string) *opaque {
	g := m.package1("globalThis")
	if g.props == nil {
		g.props = newObject()
	}
	o := m.package1(name)
	o.props = g.props
	return o
}

// unset reports whether a name of Python is one that its function or its file sets, and
// nothing else has: that the program did not come to.
func unset(name string, s *scope) bool {
	if value.PythonBuiltin(name) || open(s.module.file) {
		return false
	}
	for x := s.static; x != nil; x = x.Parent {
		bs := x.Names[name]
		if len(bs) == 0 {
			continue
		}
		return x.Class == nil && !slices.ContainsFunc(bs, func(b *code.Binding) bool { return b.Kind != "" || b.Value == nil || b.Op != "" && b.Op != "=" })
	}
	return false
}

func (m *machine) function(n *code.Node, s *scope) *function {
	f := &function{name: n.Name, node: n, scope: s, getter: n.Flag&code.Getter != 0, static: n.Flag&code.Static != 0}
	if javascript(s.module.file.Lang) && arrow(n, s.module.file) {
		f.this, f.bound = s.this, true
		if s.fn != nil {
			f.home = s.fn.home
		}
	}
	if s.python() { // Python 3.14 reference, "Function definitions"
		for _, p := range paramsOf(n.Kid(0)) {
			d := p.Kid(0)
			if d == nil || d.Is(code.String) || d.Is(code.Number) || d.Is(code.Null) || d.Is(code.True) || d.Is(code.False) {
				continue
			}
			if v, err := m.eval(d, s); err == nil {
				if f.falls == nil {
					f.falls = map[*code.Node]any{}
				}
				f.falls[d] = v
			}
		}
	}
	return f
}

// arrow reports whether a function of JavaScript sees the object of what
// surrounds it.
func arrow(n *code.Node, f *code.File) bool {
	if n.Flag&code.Arrow != 0 {
		return true
	}
	if n.Flag&code.Method != 0 || n.Name != "" {
		return false
	}
	text := strings.TrimSpace(strings.TrimPrefix(f.Between(n.Off, n.End, 30), "async"))
	return !strings.HasPrefix(text, "function")
}

func (m *machine) unary(n *code.Node, s *scope) (any, error) {
	if n.Name == "typeof" {
		if k := n.Kid(0); k.Is(code.Name) && s.find(k.Name) == nil && !globals[k.Name] {
			return "undefined", nil
		}
	}
	if n.Name == "delete" {
		k := n.Kid(0)
		if k.Is(code.Name) { // a variable
			if s.python() {
				delete(s.vars, k.Name)
			}
			return true, nil
		}
		base, err := m.eval(k.Kid(0), s)
		if err != nil {
			return nil, err
		}
		name := k.Name
		if k.Is(code.Index) {
			x, err := m.eval(k.Kid(1), s)
			if err != nil {
				return nil, err
			}
			name = show(x)
		}
		switch b := base.(type) {
		case *object:
			if k.Is(code.Index) && s.python() {
				x, _ := m.eval(k.Kid(1), s)
				if name = keyText(x); b.cells[name] == nil && b.dict {
					return nil, raise("KeyError", name)
				}
			}
			b.remove(name)
		case *envMap:
			if _, ok := m.env.get(name); !ok && s.python() {
				return nil, raise("KeyError", name)
			}
			m.env.drop(name)
		case *proxied:
			return nil, giveUp("what a proxy gives up")
		case *list:
			if s.python() {
				x, err := m.eval(k.Kid(1), s)
				i, ok := x.(integer)
				if err != nil || !ok || k.Name != "" {
					return nil, giveUp("an element that is taken out")
				}
				if i < 0 {
					i += integer(len(b.items))
				}
				if i < 0 || int(i) >= len(b.items) {
					return nil, certainly("IndexError", "list assignment index out of range")
				}
				b.items = slices.Delete(b.items, int(i), int(i)+1)
			}
		}
		return true, nil
	}
	if n.Name == "++" || n.Name == "--" {
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		f, ok := toNumber(v)
		if !ok {
			return nil, undecided("counting what is not known")
		}
		next := any(f + 1)
		if n.Name == "--" {
			next = f - 1
		}
		if i, ok := v.(integer); ok {
			next = i + 1
			if n.Name == "--" {
				next = i - 1
			}
		}
		if err := m.assign(n.Kids[0], next, s, ""); err != nil {
			return nil, err
		}
		if n.Off < n.Kids[0].Off { // before the name
			return next, nil
		}
		return f, nil
	}
	v, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	switch n.Name {
	case "<-": // it waits
		return nil, &exit{stays: true}
	case "!":
		yes, err := m.decide(v, s, n.Kid(0))
		if err != nil {
			return m.oneOf(err, s)
		}
		return !yes, nil
	case "void":
		return undefined, nil
	case "typeof":
		return typeOf(v)
	}
	if !known(v) {
		return dontKnow("what is made of " + v.(*opaque).String()), nil
	}
	if i, ok := v.(integer); ok {
		switch n.Name {
		case "-":
			return -i, nil
		case "+":
			return i, nil
		case "~":
			return ^i, nil
		}
	}
	f, _ := toNumber(v)
	switch n.Name {
	case "-":
		return -f, nil
	case "+":
		return f, nil
	case "~":
		return float64(^toInt32(f)), nil
	}
	return nil, giveUp("what %s gives", n.Name)
}

// toInt32 is a number as the operators on bits take it (ECMA-262, ToInt32).
func toInt32(f float64) int32 {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return 0
	}
	return int32(uint32(int64(math.Mod(math.Trunc(f), 1<<32))))
}

func typeOf(v any) (any, error) {
	switch v := v.(type) {
	case undef:
		return "undefined", nil
	case bool:
		return "boolean", nil
	case float64, integer:
		return "number", nil
	case string:
		return "string", nil
	case *function, *class:
		return "function", nil
	case mark:
		return "symbol", nil
	case *proxied:
		return typeOf(v.target)
	case *opaque:
		if v.path != "" && globals[v.path] {
			return "object", nil
		}
		return dontKnow("the type of " + v.String()), nil
	}
	return "object", nil
}

// globals are names that JavaScript has under Node.js, Deno and Bun.
var globals = map[string]bool{"process": true, "globalThis": true, "global": true, "console": true, "require": true, "module": true, "JSON": true, "Math": true}

func (m *machine) binary(n *code.Node, s *scope) (any, error) {
	py := s.python()
	a, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	switch n.Name {
	case "||", "&&":
		yes, err := m.decide(a, s, n.Kid(0))
		if err != nil {
			return m.oneOf(err, s, n.Kid(1))
		}
		if yes == (n.Name == "||") {
			return a, nil
		}
		return m.eval(n.Kid(1), s)
	case "??":
		if a == nil || a == any(undefined) {
			return m.eval(n.Kid(1), s)
		}
		if o, ok := a.(*opaque); ok && o.path == "" {
			return m.oneOf(undecided("whether %s is there", o.String()), s, n.Kid(1))
		}
		return a, nil
	}
	if k := n.Kid(0); py && comparing[n.Name] && k.Is(code.Binary) && comparing[k.Name] && s.module.file.Src[min(int(n.Off), len(s.module.file.Src)-1)] != '(' { // a < b < c
		if yes, ok := a.(bool); ok && !yes {
			return false, nil
		}
		if a, err = m.eval(k.Kid(1), s); err != nil {
			return nil, err
		}
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	return m.operate(n.Name, a, b, s, n)
}

var comparing = map[string]bool{"<": true, ">": true, "<=": true, ">=": true, "==": true, "!=": true}

func (m *machine) operate(name string, a, b any, s *scope, n *code.Node) (any, error) {
	py := s.python()
	switch name {
	case "==", "!=", "===", "!==":
		if o, isObject := a.(*object); py && isObject && o.class != nil {
			if f := m.method(o, "__eq__"); f != nil {
				v, err := m.call(f, o, []any{b}, nil, spot{s.module.file, n})
				if err != nil {
					return nil, err
				}
				yes, ok := truth(v, true)
				if !ok {
					return dontKnow("whether two things are the same"), nil
				}
				return yes == (name[0] == '='), nil
			}
			if p, both := b.(*object); both && o.class.data && p.class == o.class { // field by field
				if err := m.deeper(); err != nil {
					return nil, err
				}
				defer m.higher()
				for _, k := range o.keys {
					c := p.cells[k]
					if c == nil {
						return name[0] != '=', nil
					}
					v, err := m.operate("==", o.cells[k].v, c.v, s, n)
					if err != nil {
						return nil, err
					}
					if same, ok := v.(bool); !ok {
						return dontKnow("whether two things are the same"), nil
					} else if !same {
						return name[0] != '=', nil
					}
				}
				return name[0] == '=', nil
			}
		}
		if !py && (m.mainTest(n, s)) {
			return (s.module.file.Name == m.main.Name) == (name[0] == '='), nil
		}
		if py {
			if same, done, err := m.pyEqual(a, b, s, n); err != nil {
				return nil, err
			} else if done {
				return same == (name[0] == '='), nil
			}
		}
		same, ok := equals(a, b, py || len(name) == 3)
		if !ok {
			return dontKnow("whether two things are the same"), nil
		}
		return same == (name[0] == '='), nil
	case "in", "not in":
		if p, ok := b.(*proxied); ok {
			return m.proxyHas(p, a, s, n)
		}
		if py && b == nil {
			return nil, certainly("TypeError", "argument of type 'NoneType' is not iterable")
		}
		if o, isObject := b.(*object); isObject && py && o.class != nil && !o.class.builtin {
			if f := m.method(o, "__contains__"); f != nil {
				v, err := m.call(f, o, []any{a}, nil, spot{s.module.file, n})
				if err != nil {
					return nil, err
				}
				yes, ok := truth(v, true)
				if !ok {
					return dontKnow("whether something is in it"), nil
				}
				return yes == (name == "in"), nil
			}
		}
		in, ok := m.contains(b, a, py)
		if !ok {
			return dontKnow("whether something is in what is not known"), nil
		}
		return in == (name == "in"), nil
	case "instanceof":
		if c, ok := b.(*class); ok {
			o, ok := a.(*object)
			return ok && derives(o.class, c), nil
		}
		if f, ok := b.(*function); ok && f.node != nil { // what it made, or what comes from that
			o, _ := a.(*object)
			for p := o; p != nil; p = p.proto {
				if p.class != nil && p.class.node == f.node || f.props != nil && f.props.cells["prototype"] != nil && f.props.cells["prototype"].v == any(p) {
					return true, nil
				}
			}
			return false, nil
		}
		if w, ok := b.(*opaque); ok && w.path == "Promise" {
			_, is := a.(*promise)
			return is, nil
		}
		if o, ok := a.(*object); ok && o.class != nil {
			if w, ok := b.(*opaque); ok {
				return o.class.name == w.path || o.class.name == w.path[strings.LastIndexByte(w.path, '.')+1:] || w.path == "Error", nil
			}
		}
		made, ok := a.(*opaque)
		if !ok {
			return false, nil
		}
		if w, ok := b.(*opaque); ok {
			if classes, ok := jsMakes[strings.TrimPrefix(made.path, "node:")]; ok && jsServers[strings.TrimPrefix(w.path, "node:")] {
				return classes[strings.TrimPrefix(w.path, "node:")], nil
			}
		}
		return dontKnow("what class something is of"), nil
	}
	for _, x := range []any{a, b} {
		if o, ok := x.(*opaque); ok {
			if p, isPath := a.(*opaque); name == "/" && isPath && py {
				return m.joined(p, b), nil
			}
			return dontKnow("what is made of " + o.String()), nil
		}
	}
	if p, ok := a.(pyPath); ok && name == "/" {
		return pyPath(path.Join(string(p), pathText(b))), nil
	}
	if py {
		if v, done, err := m.pySigned(name, a, b, s, n); done || err != nil {
			return v, err
		}
	}
	if format, ok := a.(string); ok && py && name == "%" {
		return m.percent(format, b, spot{s.module.file, n})
	}
	if py {
		return pyOperate(name, a, b)
	}
	for _, x := range []*any{&a, &b} {
		hint := "default"
		if name != "+" {
			hint = "number"
		}
		var err error
		if *x, err = m.jsPrimitive(*x, hint, s, n); err != nil {
			return nil, err
		}
		if o, ok := (*x).(*opaque); ok {
			return dontKnow("what is made of " + o.String()), nil
		}
	}
	return jsOperate(name, a, b)
}

// joined is a path of Python with one more part.
func (m *machine) joined(p *opaque, b any) any {
	return &opaque{path: p.path + "/", recv: p, args: []any{p, b}}
}

// mainTest tells `require.main === module` and its like.
func (m *machine) mainTest(n *code.Node, s *scope) bool {
	mains := 0
	for _, k := range n.Kids {
		k.Walk(func(x *code.Node) bool {
			switch x.Dotted() {
			case "require.main", "import.meta.url", "import.meta.filename":
				mains |= 1
			case "module", "process.argv", "__filename":
				mains |= 2
			}
			return true
		})
	}
	return mains == 3
}

func derives(c, from *class) bool { return slices.Contains(c.line(), from) }

// types are the types and conversions that a language has by a name: two names,
// two things.
var types = map[string]bool{"str": true, "int": true, "bool": true, "float": true, "list": true, "dict": true, "tuple": true, "set": true, "bytes": true,
	"String": true, "Number": true, "Boolean": true, "Object": true, "Array": true, "Function": true, "parseInt": true, "parseFloat": true}

// equals compares; ok is false where one is not known.
func equals(a, b any, strict bool) (same, ok bool) { return equalsIn(a, b, strict, &reach{}) }

func equalsIn(a, b any, strict bool, r *reach) (same, ok bool) {
	if !r.in() {
		return false, false
	}
	defer r.out()
	if x, isO := a.(*opaque); isO {
		y, both := b.(*opaque)
		if both && x.path != "" && x.path == y.path && !strings.Contains(x.path, "()") {
			return true, true
		}
		if both && types[x.path] && types[y.path] {
			return false, true
		}
		if _, isBool := b.(bool); (x.certain() || x.fresh) && (b == nil || b == any(undefined)) || x.fresh && isBool && strict {
			return false, true
		}
		return false, false
	}
	if _, isO := b.(*opaque); isO {
		return equalsIn(b, a, strict, r)
	}
	nothing := func(v any) bool { return v == nil || v == any(undefined) }
	if nothing(a) || nothing(b) {
		if strict {
			return a == b, true
		}
		return nothing(a) && nothing(b), true
	}
	switch x := a.(type) {
	case string:
		if y, ok := b.(string); ok {
			return x == y, true
		}
	case symbol:
		y, ok := b.(symbol)
		return ok && x == y, true
	case mark:
		y, ok := b.(mark)
		return ok && x == y, true
	case *list:
		y, ok := b.(*list)
		if !ok && !strict && !x.tuple {
			return equalsIn(show(x), b, false, r)
		}
		if !ok || x == y {
			return ok, true
		}
		if !x.tuple && !y.tuple {
			return false, true
		}
		if len(x.items) != len(y.items) {
			return false, true
		}
		for i := range x.items {
			if same, ok := equalsIn(x.items[i], y.items[i], strict, r); !ok || !same {
				return false, ok
			}
		}
		return true, true
	case *object, *function, *class, *promise, *module, *pattern, *envMap, *proxied:
		return a == b, true
	}
	if _, isText := a.(string); isText && strict {
		return false, true
	}
	if _, isText := b.(string); isText && strict {
		return false, true
	}
	x, _ := toNumber(a)
	y, _ := toNumber(b)
	_, boolA := a.(bool)
	_, boolB := b.(bool)
	if strict && boolA != boolB {
		return false, true
	}
	return x == y, true
}

func (m *machine) contains(in, what any, py bool) (yes, ok bool) {
	switch in := in.(type) {
	case integer: // of flags
		w, ok := what.(integer)
		return ok && in&w == w, ok && py
	case *envMap:
		m.vague(show(what))
		_, yes = m.env.get(show(what))
		return yes, known(what)
	case string:
		w, ok := what.(string)
		return ok && strings.Contains(in, w), ok
	case *list:
		if !py {
			return false, false
		}
		for _, x := range in.items {
			same, ok := equals(x, what, true)
			if !ok {
				return false, false
			}
			if same {
				return true, true
			}
		}
		return false, true
	case *object:
		if in.mapping != nil {
			return m.contains(in.mapping, what, py)
		}
		if _, yes = in.get(show(what)); !yes && in.proto != nil {
			return m.contains(in.proto, what, py)
		}
		return yes, known(what) && (in.class == nil || in.dict || !py)
	case globalNames:
		return in.top.vars[show(what)] != nil, known(what)
	case *opaque:
		if in.path == "sys.argv" {
			for _, a := range m.argv() {
				if same, ok := equals(a, what, true); ok && same {
					return true, true
				}
			}
			return false, true
		}
	}
	return false, false
}

func jsOperate(name string, a, b any) (any, error) {
	if name == "+" {
		_, textA := a.(string)
		_, textB := b.(string)
		if textA || textB || plainObject(a) || plainObject(b) {
			s := show(a) + show(b)
			if len(s) > maxText {
				return nil, spent("a text that is too long")
			}
			return s, nil
		}
	}
	if comparing[name] {
		x, textA := a.(string)
		y, textB := b.(string)
		if textA && textB {
			return ordered(name, strings.Compare(x, y)), nil
		}
	}
	x, _ := toNumber(a)
	y, _ := toNumber(b)
	if comparing[name] {
		if math.IsNaN(x) || math.IsNaN(y) {
			return false, nil
		}
		return ordered(name, compare(x, y)), nil
	}
	return arithmetic(name, x, y)
}

func plainObject(v any) bool {
	switch v.(type) {
	case *object, *list, *function:
		return true
	}
	return false
}

func compare(x, y float64) int {
	switch {
	case x < y:
		return -1
	case x > y:
		return 1
	}
	return 0
}

func ordered(name string, c int) bool {
	switch name {
	case "<":
		return c < 0
	case ">":
		return c > 0
	case "<=":
		return c <= 0
	}
	return c >= 0
}

func arithmetic(name string, x, y float64) (any, error) {
	switch name {
	case "+":
		return x + y, nil
	case "-":
		return x - y, nil
	case "*":
		return x * y, nil
	case "/":
		return x / y, nil
	case "%":
		return math.Mod(x, y), nil
	case "**":
		return math.Pow(x, y), nil
	case "|":
		return float64(toInt32(x) | toInt32(y)), nil
	case "&":
		return float64(toInt32(x) & toInt32(y)), nil
	case "^":
		return float64(toInt32(x) ^ toInt32(y)), nil
	case "<<":
		return float64(toInt32(x) << (uint32(toInt32(y)) & 31)), nil
	case ">>":
		return float64(toInt32(x) >> (uint32(toInt32(y)) & 31)), nil
	case ">>>":
		return float64(uint32(toInt32(x)) >> (uint32(toInt32(y)) & 31)), nil
	}
	return nil, giveUp("what %s gives", name)
}

// pyEqual compares lists, sets and dictionaries of Python by what they hold; done
// is false for other things, and where that is not known.
func (m *machine) pyEqual(a, b any, s *scope, n *code.Node) (same, done bool, err error) {
	each := func(x, y any) (bool, bool, error) {
		if err := m.deeper(); err != nil {
			return false, false, err
		}
		defer m.higher()
		v, err := m.operate("==", x, y, s, n)
		if err != nil {
			return false, false, err
		}
		yes, ok := v.(bool)
		if !ok {
			return false, false, undecided("whether two things are the same")
		}
		return yes, true, nil
	}
	if m.depth++; m.depth > maxDepth {
		return false, false, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	if err := m.step(); err != nil {
		return false, false, err
	}
	switch x := a.(type) {
	case *list:
		y, ok := b.(*list)
		if !ok || x.tuple != y.tuple || x.set != y.set || len(x.items) != len(y.items) {
			return false, ok, nil
		}
		if x.set {
			v, err := setOperate("<=", x, y)
			yes, _ := v.(bool)
			return yes, true, err
		}
		for i := range x.items {
			if same, ok, err := each(x.items[i], y.items[i]); !same {
				return false, ok, err
			}
		}
		return true, true, nil
	case *object:
		y, ok := b.(*object)
		plain := func(o *object) bool { return o.dict || o.class == nil }
		if !ok || !plain(x) || !plain(y) || len(x.keys) != len(y.keys) {
			return false, ok && plain(x) && plain(y), nil
		}
		for _, k := range x.keys {
			c := y.cells[k]
			if c == nil {
				return false, true, nil
			}
			if same, ok, err := each(x.cells[k].v, c.v); !same {
				return false, ok, err
			}
		}
		return true, true, nil
	}
	return false, false, nil
}

// setOperate computes with two sets of Python, or with a set and a view of keys.
func setOperate(name string, a, b *list) (any, error) {
	holds := func(l *list, v any) (bool, error) {
		for _, x := range l.items {
			same, ok := equals(x, v, false)
			if !ok {
				return false, undecided("whether two members of a set are equal")
			}
			if same {
				return true, nil
			}
		}
		return false, nil
	}
	if len(a.items)+len(b.items) > 1<<10 {
		return nil, spent("a set that is too long")
	}
	rest := func(a, b *list, in bool) (list []any, err error) {
		for _, v := range a.items {
			has, err := holds(b, v)
			if err != nil {
				return nil, err
			}
			if has == in {
				list = append(list, v)
			}
		}
		return list, nil
	}
	var left, right []any
	var err error
	if left, err = rest(a, b, name == "&"); err != nil {
		return nil, err
	}
	if right, err = rest(b, a, false); err != nil {
		return nil, err
	}
	switch name {
	case "-", "&":
	case "^":
		left = append(left, right...)
	case "|":
		left = append(slices.Clone(a.items), right...)
	case "<=":
		return len(left) == 0, nil
	case "<":
		return len(left) == 0 && len(right) > 0, nil
	case ">=":
		return len(right) == 0, nil
	case ">":
		return len(right) == 0 && len(left) > 0, nil
	default:
		return nil, raise("TypeError", "what "+name+" gives")
	}
	return &list{items: left, set: true}, nil
}

func pyOperate(name string, a, b any) (any, error) {
	if x, ok := a.(string); ok {
		y, isText := b.(string)
		switch {
		case name == "+" && isText:
			if len(x)+len(y) > maxText {
				return nil, spent("a text that is too long")
			}
			return x + y, nil
		case name == "%":
			return nil, giveUp("a format that is not followed")
		case name == "*":
			if n, ok := b.(integer); ok && len(x)*int(n) < maxText {
				return strings.Repeat(x, int(max(0, n))), nil
			} else if ok {
				return nil, spent("a text that is too long")
			}
		case comparing[name] && isText:
			return ordered(name, strings.Compare(x, y)), nil
		}
		return nil, mistaken(a, b, "TypeError", "what "+name+" gives")
	}
	if n, ok := a.(integer); ok && name == "*" {
		switch b.(type) {
		case string, *list:
			return pyOperate(name, b, n)
		}
	}
	if x, ok := a.(*list); ok && comparing[name] && !x.set {
		if y, ok := b.(*list); ok && !y.set {
			n, ok := pyLess(x, y)
			if !ok {
				return nil, undecided("how two lists compare")
			}
			return ordered(name, n), nil
		}
	}
	if x, ok := a.(*list); ok {
		if y, ok := b.(*list); ok && !x.tuple && !y.tuple && name != "+" && (x.set || y.set) {
			return setOperate(name, x, y)
		}
		if n, ok := b.(integer); ok && name == "*" && !x.set && (n <= 0 || len(x.items)*int(n) < maxItems) {
			l := &list{tuple: x.tuple}
			for range max(0, int(n)) {
				l.items = append(l.items, x.items...)
			}
			return l, nil
		}
		if y, ok := b.(*list); ok && (name == "+" || name == "|") && len(x.items)+len(y.items) < maxItems {
			return &list{items: append(slices.Clone(x.items), y.items...), tuple: x.tuple, set: x.set}, nil
		}
	}
	if x, ok := a.(*object); ok && name == "|" {
		if y, ok := b.(*object); ok {
			o := newObject()
			o.dict = true
			for _, from := range []*object{x, y} {
				for _, k := range from.keys {
					o.set(k, from.cells[k].v)
				}
			}
			return o, nil
		}
	}
	numeric := func(v any) bool {
		switch v.(type) {
		case integer, float64, bool:
			return true
		}
		return false
	}
	if !numeric(a) || !numeric(b) {
		return nil, mistaken(a, b, "TypeError", "what "+name+" gives")
	}
	x, _ := toNumber(a)
	y, _ := toNumber(b)
	if comparing[name] {
		return ordered(name, compare(x, y)), nil
	}
	_, fa := a.(float64)
	_, fb := b.(float64)
	if (name == "/" || name == "//" || name == "%") && y == 0 {
		return nil, raise("ZeroDivisionError", "division by zero")
	}
	r := 0.0
	switch name {
	case "/":
		return x / y, nil
	case "//":
		r = math.Floor(x / y)
	case "%":
		r = x - y*math.Floor(x/y)
	default:
		v, err := arithmetic(name, x, y)
		if err != nil {
			return nil, err
		}
		r, _ = v.(float64)
	}
	if !fa && !fb && r == math.Trunc(r) && math.Abs(r) < 1<<53 {
		return integer(r), nil
	}
	return r, nil
}

func (m *machine) assignment(n *code.Node, s *scope) (any, error) {
	sign := strings.TrimSuffix(n.Name, "=")
	if sign == "" || n.Name == ":=" {
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		if f, ok := v.(*function); ok && f.name == "" {
			f.name = n.Kids[0].Name
		}
		return v, m.assign(n.Kids[0], v, s, "")
	}
	to := n.Kids[0]
	if to.Is(code.Index) && !s.ruby() && !s.java() && !s.php() && changes(to) { // what it stands in is worked out once
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return nil, err
		}
		k, err := m.eval(to.Kid(1), s)
		if err != nil {
			return nil, err
		}
		s = s.inner()
		s.declare("\x00base", base)
		s.declare("\x00key", k)
		name := func(name string, of *code.Node) *code.Node {
			return &code.Node{Kind: code.Name, Name: name, Off: of.Off, End: of.End}
		}
		to = &code.Node{Kind: code.Index, Off: to.Off, End: to.End, Kids: []*code.Node{name("\x00base", to.Kids[0]), name("\x00key", to.Kids[1])}}
	}
	a, err := m.eval(to, s)
	if err != nil {
		return nil, err
	}
	switch sign {
	case "||", "&&":
		yes, err := m.decide(a, s, n.Kid(0))
		if err != nil {
			return m.oneOfTo(err, to, n.Kid(1), s)
		}
		if yes == (sign == "||") {
			return a, nil
		}
	case "??":
		if a != nil && a != any(undefined) {
			return a, nil
		}
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	v := b
	if l, ok := a.(*list); ok && sign == "+" && s.python() && !l.tuple {
		items, err := m.items(b, s)
		if err != nil {
			return nil, err
		}
		l.items = append(l.items, items...)
		return l, nil
	}
	if sign != "||" && sign != "&&" && sign != "??" {
		if v, err = m.operate(sign, a, b, s, n); err != nil {
			return nil, err
		}
	}
	return v, m.assign(to, v, s, "")
}

// changes reports whether working an expression out may change something.
func changes(n *code.Node) bool {
	found := false
	n.Walk(func(k *code.Node) bool {
		found = found || k.Is(code.Call) || k.Is(code.New) || k.Is(code.Assign) || k.Is(code.Unary) && (k.Name == "++" || k.Name == "--")
		return !found && !k.Is(code.Func)
	})
	return found
}

func (m *machine) objectNode(n *code.Node, s *scope) (any, error) {
	o := newObject()
	var cloud *opaque
	o.dict = s.python()
	for _, p := range n.Kids {
		if p.Is(code.Spread) {
			v, err := m.eval(p.Kid(0), s)
			if err != nil {
				return nil, err
			}
			switch v := v.(type) {
			case *object:
				for _, k := range v.keys {
					x, err := m.read(v.cells[k])
					if err != nil {
						return nil, err
					}
					o.set(k, x)
				}
			case *envMap:
				for _, k := range m.envKeys() {
					o.set(k, m.env.text(k))
				}
			case *opaque:
				return nil, giveUp("the properties of %s", v.String())
			case *list:
				for i, x := range v.items {
					o.set(number(float64(i)), x)
				}
			}
			continue
		}
		name, v, err := m.pair(p, s)
		if err != nil {
			return nil, err
		}
		if name == keyOfCloud {
			cloud = dontKnow("a dictionary with a key that is not known")
			continue
		}
		f, isFunction := v.(*function)
		if plain, ok := strings.CutPrefix(name, code.Setter); ok && isFunction && p.Kid(0).Is(code.Func) && javascript(s.module.file.Lang) {
			if o.setters == nil {
				o.setters = map[string]*function{}
			}
			o.setters[plain] = f
			continue
		}
		if isFunction && f.name == "" {
			f.name = name
		}
		o.set(name, v)
	}
	if cloud != nil {
		return cloud, nil
	}
	return o, nil
}

// keyOfCloud stands for a key of which nothing is known.
const keyOfCloud = "\x00?"

// subject is the left side of an operator; that of a case is worked out once for
// all that it is compared with.
func (m *machine) subject(n *code.Node, s *scope) (any, error) {
	k := n.Kid(0)
	if n.Alias == code.Again {
		if v, ok := m.subjects[k]; ok {
			return v, nil
		}
	}
	v, err := m.eval(k, s)
	if err == nil && n.Alias == code.When {
		if m.subjects == nil {
			m.subjects = map[*code.Node]any{}
		}
		m.subjects[k] = v
	}
	return v, err
}

// pair is an entry of a map or an object that is written out.
func (m *machine) pair(p *code.Node, s *scope) (name string, v any, err error) {
	if !p.Is(code.Pair) {
		return "", nil, giveUp("an element that is not followed")
	}
	name = p.Name
	if p.Kid(1) != nil {
		k, err := m.eval(p.Kid(1), s)
		if err != nil {
			return "", nil, err
		}
		switch k := k.(type) {
		case *opaque: // a class that the language brings along is itself, whatever else is not known
			if name = keyOfCloud; k.path != "" && !strings.ContainsAny(k.path, ".()") {
				name = "\x00" + k.path
			}
		default:
			name = keyText(k)
		}
	}
	v, err = m.eval(p.Kid(0), s)
	return name, v, err
}

// keyText is a key as a text.
func keyText(k any) string {
	if s, ok := k.(mark); ok {
		return "\x00@" + s.id
	}
	if o, ok := k.(*object); ok {
		if v, ok := o.get("value"); ok {
			return "\x00" + show(v)
		}
	}
	return show(k)
}

// comprehension goes through the parts of a comprehension, one within the other.
func (m *machine) comprehension(n *code.Node, s *scope) (any, error) {
	in := s.inner()
	in.own = true
	l, o := &list{}, newObject()
	o.dict = true
	pair := n.Kids[0].Is(code.Pair)
	add := func() error {
		e := n.Kids[0]
		if pair {
			e = e.Kid(0)
		}
		v, err := m.eval(e, in)
		if err != nil {
			return err
		}
		if !pair {
			if l.items = append(l.items, v); len(l.items) > maxItems {
				return spent("a list that is too long")
			}
			return nil
		}
		name := n.Kids[0].Name
		if k := n.Kids[0].Kid(1); k != nil {
			x, err := m.eval(k, in)
			if err != nil {
				return err
			}
			name = keyText(x)
		}
		o.set(name, v)
		return nil
	}
	var part func(parts string, at int) error
	part = func(parts string, at int) error {
		if parts == "" {
			return add()
		}
		if err := m.step(); err != nil {
			return err
		}
		if parts[0] == 'i' {
			yes, err := m.holds(n.Kids[at], in)
			if err != nil || !yes {
				return err
			}
			return part(parts[1:], at+1)
		}
		from := in
		if at == 1 {
			from = s // the first is made outside of it
		}
		v, err := m.eval(n.Kids[at+1], from)
		if err != nil {
			return err
		}
		items, err := m.items(v, s)
		if err != nil {
			return err
		}
		for _, x := range items {
			if err := m.assign(n.Kids[at], x, in, ""); err != nil {
				return err
			}
			if err := part(parts[1:], at+2); err != nil {
				return err
			}
		}
		return nil
	}
	if err := part(n.Name, 1); err != nil {
		return nil, err
	}
	if pair {
		return o, nil
	}
	return l, nil
}

// items lists what is gone through.
func (m *machine) items(v any, s *scope) ([]any, error) {
	switch v := v.(type) {
	case *list:
		return v.items, nil
	case string:
		var l []any
		for _, r := range v {
			l = append(l, string(r))
		}
		return l, nil
	case *object:
		if javascript(s.module.file.Lang) {
			if l, done, err := m.iterated(v, s); done || err != nil {
				return l, err
			}
		}
		var l []any
		if v.class != nil && !v.class.builtin && s.python() {
			if f := m.method(v, "__iter__"); f != nil {
				x, err := m.call(f, v, nil, nil, spot{s.module.file, s.module.file.Body})
				if err != nil {
					return nil, err
				}
				if x == any(v) {
					return nil, giveUp("what goes through itself")
				}
				if err := m.deeper(); err != nil {
					return nil, err
				}
				defer m.higher()
				return m.items(x, s)
			}
		}
		switch {
		case v.mapping != nil:
			return m.items(v.mapping, s)
		case v.class != nil && v.class.data:
			for _, k := range v.keys {
				l = append(l, v.cells[k].v)
			}
			return l, nil
		case v.class != nil && v.class.name == "Map":
			for _, k := range v.keys {
				l = append(l, &list{items: []any{k, v.cells[k].v}})
			}
			return l, nil
		case v.class != nil && v.class.name == "Set":
			for _, k := range v.keys {
				l = append(l, v.cells[k].v)
			}
			return l, nil
		case v.dict:
			for _, k := range v.keys {
				l = append(l, k)
			}
			return l, nil
		case v.cells[askedFor] != nil:
			return v.cells[askedFor].v.(*list).items, nil
		}
	case *envMap:
		var l []any
		for _, k := range m.envKeys() {
			l = append(l, k)
		}
		return l, nil
	case *content: // its lines
		var l []any
		for line := range strings.SplitAfterSeq(v.text, "\n") {
			if line != "" && len(l) < maxItems {
				l = append(l, line)
			}
		}
		return l, nil
	case *class:
		if v.enum {
			var l []any
			for _, k := range v.statics.keys {
				if _, fn := v.statics.cells[k].v.(*function); !fn {
					l = append(l, v.statics.cells[k].v)
				}
			}
			return l, nil
		}
	case *opaque:
		if v.path == "sys.argv" || v.path == "process.argv" {
			return m.argv(), nil
		}
		return nil, undecided("all of %s", v.String())
	}
	return nil, noItems(v, s)
}

func (m *machine) envKeys() []string {
	var keys []string
	for k := range m.env.all() {
		keys = append(keys, k)
	}
	for _, k := range slices.Sorted(maps.Keys(m.set.Vague)) {
		m.vague(k)
	}
	slices.Sort(keys)
	return keys
}

// commandLine is the list of the arguments that the program has, from one on: it may
// change it.
func (m *machine) commandLine(from int) *list {
	if m.line[from] == nil {
		if m.line == nil {
			m.line = map[int]*list{}
		}
		m.line[from] = &list{items: m.words(from)}
	}
	return m.line[from]
}

// words are the arguments from one on: a program may have taken some away.
func (m *machine) words(from int) []any {
	list := m.argv()
	return list[min(from, len(list)):]
}

// argv is the command line, with what comes before its arguments, as the program
// has it by now.
func (m *machine) argv() []any {
	if sys := m.packages["sys"]; sys != nil && sys.props != nil {
		if v, ok := sys.props.get("argv"); ok {
			if l, ok := v.(*list); ok && len(l.items) > 0 {
				return slices.Clone(l.items)
			}
		}
	}
	if os := m.packages["os"]; os != nil && os.props != nil && m.main.Lang == code.Go { // os.Args, once it is set
		switch v, _ := os.props.get("Args"); v := v.(type) {
		case *list:
			return slices.Clone(v.items)
		case *goList:
			var l []any
			for _, c := range v.a {
				l = append(l, c.v.v)
			}
			return l
		}
	}
	if now := m.line[0]; now != nil && len(now.items) > 0 {
		return slices.Clone(now.items)
	}
	return m.began()
}

// asking is package value with the arguments as the program has them by now.
func (m *machine) asking() *value.Eval {
	sys := m.packages["sys"]
	if m.line[0] == nil && (sys == nil || sys.props == nil) {
		return m.e
	}
	now, began := m.argv(), m.began()
	if slices.EqualFunc(now, began, func(a, b any) bool { return show(a) == show(b) }) {
		return m.e
	}
	if m.changed != nil && slices.EqualFunc(now[1:], m.changed.Args, func(a any, v *value.Value) bool { return show(a) == v.Text }) {
		return m.changed
	}
	if m.changes++; m.changes > maxChanges {
		m.doubt = "the arguments of the command line, which the program changes often"
		return m.e
	}
	e := value.New(m.e.Loader, m.e.Main)
	e.Dir, e.Packaged, e.Settings = m.e.Dir, m.e.Packaged, m.e.Settings
	e.Args, e.Quoted = []*value.Value{}, nil
	at := m.main.At(m.main.Body)
	for _, a := range now[1:] {
		if t, ok := a.(string); ok {
			e.Args = append(e.Args, value.Text(t, at))
		} else {
			e.Args = append(e.Args, value.NotKnown(show(a), at))
		}
	}
	m.changed = e
	return e
}

// began is the command line that the program was given.
func (m *machine) began() []any {
	l := []any{root + "/" + m.main.Name}
	if javascript(m.main.Lang) {
		l = []any{"node", root + "/" + m.main.Name}
	}
	for i, a := range m.e.Args {
		o := a.Under(m.now())
		quoted := i < len(m.e.Quoted) && m.e.Quoted[i]
		switch {
		case quoted && (o.Kind == value.Undef || o.Kind == value.Null):
			l = append(l, "")
		case quoted && o.Kind == value.Str:
			l = append(l, o.Text)
		case o.Kind == value.Str && (o.Text != "" || a.Kind == value.Str):
			l = append(l, o.Text)
		case o.Kind == value.Str, o.Kind == value.Undef, o.Kind == value.Null:
		default:
			l = append(l, dontKnow("an argument"))
		}
	}
	return l
}
