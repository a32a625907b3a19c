package trace

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/value"
)

// What programs of Java do (The Java Language Specification, SE 25; read
// 2026-11): classes are found by their names, methods are chosen by what they
// are given, whole numbers stay whole.

// character is a char of Java.
type character rune

// javaState is what a program of Java has beside its scopes.
type javaState struct {
	classes map[*code.Node]*class
	ready   map[*class]bool // their static parts have run
	missing map[string]bool
}

func (m *machine) jv() *javaState {
	if m.java == nil {
		m.java = &javaState{classes: map[*code.Node]*class{}, ready: map[*class]bool{}, missing: map[string]bool{}}
	}
	return m.java
}

func (s *scope) java() bool { return s.module.file.Lang == code.Java }

// runJava runs main of the class of a file that has one.
func (m *machine) runJava(file string) error {
	mod, err := m.jvFile(file)
	if err != nil {
		return err
	}
	for _, n := range mod.file.Body.Kids {
		if !n.Is(code.Class) {
			continue
		}
		c, err := m.jvClass(n, mod.top)
		if err != nil {
			return err
		}
		for _, f := range jvMethods(c, "main", true) {
			if err := m.jvReady(c); err != nil {
				return err
			}
			args := []any{}
			if len(paramsOf(f.node.Kid(0))) == 1 {
				args = []any{&list{items: m.argv()[1:]}}
			}
			_, err := m.jvInvoke(f, undefined, args, spot{mod.file, f.node})
			return err
		}
	}
	return giveUp("there is no main")
}

// jvFile is a file whose classes are known, without any of them having run.
func (m *machine) jvFile(name string) (*module, error) {
	if mod := m.modules[name]; mod != nil {
		return mod, nil
	}
	f := m.e.Loader.File(name)
	if f == nil || f.Body == nil {
		return nil, giveUp("%s could not be read", name)
	}
	mod := &module{file: f, exports: newObject()}
	mod.top = &scope{vars: map[string]*cell{}, module: mod, static: f.Top, this: undefined, own: true}
	m.modules[name] = mod
	return mod, nil
}

// jvClass is a class that is declared, with those that it comes from.
func (m *machine) jvClass(n *code.Node, s *scope) (*class, error) {
	if c := m.jv().classes[n]; c != nil {
		return c, nil
	}
	if m.depth++; m.depth > maxDepth {
		return nil, giveUp("classes that come from each other")
	}
	defer func() { m.depth-- }()
	c := &class{name: n.Name, node: n, statics: newObject(), methods: newObject()}
	in := s.inner()
	in.own, in.this, in.static = true, c, s.module.file.Inside[n]
	if in.static == nil {
		in.static = s.static
	}
	c.scope = in
	m.jv().classes[n] = c
	c.enum = strings.HasPrefix(jvHead(n, s.module.file), "enum")
	for _, b := range n.Kid(0).Kids {
		if v := m.jvNamed(b.Dotted(), s); v != nil {
			c.bases = append(c.bases, v)
		}
	}
	return c, nil
}

// jvHead is the text of a declaration from its word on.
func jvHead(n *code.Node, f *code.File) string { return f.Between(n.Off, n.End, 24) }

// jvNamed is the class that a name stands for: one around, one of the file, of
// the package, of an import, or one from outside. Nil for a name of nothing.
func (m *machine) jvNamed(name string, s *scope) any {
	head, rest, nested := strings.Cut(name, ".")
	if head == "" {
		return nil
	}
	var c *class
	for x := s; x != nil && c == nil; x = x.up {
		if v := x.vars[head]; v != nil {
			c, _ = v.v.(*class)
		}
		if around, ok := x.this.(*class); ok && c == nil {
			if around.name == head {
				c = around
				break
			}
			for _, k := range around.line() {
				if in := m.jvInner(k, head); in != nil {
					c = in
					break
				}
			}
		}
	}
	f := s.module.file
	if c == nil {
		c = m.jvTop(f, head)
	}
	path := ""
	if c == nil {
		for _, i := range f.Imports {
			if strings.HasSuffix(i.Node.Name, "."+head) {
				path = i.Node.Name
			}
		}
		asks := []string{path, head}
		for _, i := range f.Imports {
			if of, ok := strings.CutSuffix(i.Node.Name, ".*"); ok {
				asks = append(asks, of+"."+head)
			}
		}
		for _, ask := range asks {
			if ask == "" || c != nil {
				continue
			}
			if to, ok := m.e.Loader.Resolve(f, ask, ""); ok {
				if g := m.e.Loader.File(to); g != nil {
					c = m.jvTop(g, head)
				}
			} else if i := strings.LastIndexByte(ask, '.'); i > 0 && ask == path { // a class in a class
				if to, ok := m.e.Loader.Resolve(f, ask[:i], ""); ok {
					if g := m.e.Loader.File(to); g != nil {
						if outer := m.jvTop(g, ask[strings.LastIndexByte(ask[:i], '.')+1:i]); outer != nil {
							c = m.jvInner(outer, head)
						}
					}
				}
			}
		}
	}
	if c == nil && path == "" && head[0] >= 'A' && head[0] <= 'Z' {
		for _, g := range m.e.Loader.Loaded() {
			if g.Lang == code.Java && c == nil {
				c = m.jvTop(g, head)
			}
		}
	}
	switch {
	case c != nil && nested:
		if in := m.jvInner(c, rest); in != nil {
			return in
		}
		return nil
	case c != nil:
		return c
	case path != "":
		return m.package1(strings.TrimSuffix(value.Platform(path)+"."+rest, "."))
	case nested && head[0] >= 'a' && head[0] <= 'z': // java.net.X
		return m.package1(value.Platform(name))
	case head[0] >= 'A' && head[0] <= 'Z':
		return m.package1(name)
	}
	return nil
}

// jvTop is a class at the top of a file.
func (m *machine) jvTop(f *code.File, name string) *class {
	for _, n := range f.Body.Kids {
		if n.Is(code.Class) && n.Name == name {
			mod, err := m.jvFile(f.Name)
			if err != nil {
				return nil
			}
			c, err := m.jvClass(n, mod.top)
			if err != nil {
				return nil
			}
			return c
		}
	}
	return nil
}

// jvAt is the class that a declaration makes, wherever in its file it stands.
func (m *machine) jvAt(f *code.File, n *code.Node) *class {
	for _, k := range f.Body.Kids {
		if !k.Is(code.Class) || n.Off < k.Off || n.Off >= k.End {
			continue
		}
		c := m.jvTop(f, k.Name)
		for depth := 0; c != nil && c.node != n && depth < 20; depth++ {
			var in *class
			for _, d := range c.node.Kid(1).Kids {
				if d.Is(code.Class) && n.Off >= d.Off && n.Off < d.End {
					in = m.jvInner(c, d.Name)
				}
			}
			c = in
		}
		return c
	}
	return nil
}

// jvInner is a class inside a class.
func (m *machine) jvInner(c *class, name string) *class {
	if c.node == nil || c.node.Kid(1) == nil {
		return nil
	}
	for _, n := range c.node.Kids[1].Kids {
		if n.Is(code.Class) && n.Name == name {
			in, err := m.jvClass(n, c.scope)
			if err != nil {
				return nil
			}
			return in
		}
	}
	return nil
}

// jvMethods are the methods of a name that a class has, those of what it comes
// from behind its own.
func jvMethods(c *class, name string, own bool) (list []*function) {
	for _, x := range c.line() {
		if x.node == nil {
			continue
		}
		for _, k := range x.node.Kid(1).Kids {
			if k.Is(code.Func) && k.Name == name && name != x.name && name != "constructor" && k.Kid(1) != nil && k.Kids[1].Off < k.Kids[1].End { // one with a body
				list = append(list, &function{name: name, node: k, scope: x.scope, home: x, static: k.Flag&code.Static != 0})
			}
		}
		if own {
			break
		}
	}
	return list
}

// jvFits says how well a method takes what it is given: less than 0 for not at
// all.
func jvFits(f *function, args []any) int {
	params := paramsOf(f.node.Kid(0))
	rest := len(params) > 0 && params[len(params)-1].Flag&code.Rest != 0
	if len(args) != len(params) && !(rest && len(args) >= len(params)-1) {
		return -1
	}
	score := 10
	if rest {
		score = 5
	}
	for i, a := range args {
		p := params[min(i, len(params)-1)]
		ok, exact := true, false
		switch a.(type) {
		case string:
			ok = !strings.HasSuffix(p.Alias, "[]") && !primitive[p.Alias] && p.Alias != "Integer" && p.Alias != "Boolean" && p.Alias != "Long" && p.Alias != "Double"
			exact = p.Alias == "String"
		case integer:
			ok = !strings.HasSuffix(p.Alias, "[]") && p.Alias != "String" && p.Alias != "boolean" && p.Alias != "Boolean"
			exact = p.Alias == "int" || p.Alias == "Integer"
		case bool:
			ok = p.Alias != "String" && p.Alias != "int" && p.Alias != "Integer"
			exact = p.Alias == "boolean"
		case *list:
			ok = p.Alias != "String" && !(primitive[p.Alias] && p.Flag&code.Rest == 0)
		case nil:
			ok = !primitive[p.Alias]
		case *object:
			ok = p.Alias != "String" && !primitive[p.Alias]
		}
		if !ok && !(rest && i >= len(params)-1) {
			return -1
		}
		if exact {
			score += 2
		}
	}
	return score
}

var primitive = map[string]bool{"int": true, "long": true, "short": true, "byte": true, "char": true, "boolean": true, "double": true, "float": true}

func jvChoose(list []*function, args []any) *function {
	var best *function
	most := -1
	for _, f := range list {
		if n := jvFits(f, args); n > most {
			best, most = f, n
		}
	}
	return best
}

// jvReady runs the static parts of a class once.
func (m *machine) jvReady(c *class) error {
	if m.jv().ready[c] || c.node == nil {
		return nil
	}
	m.jv().ready[c] = true
	for _, b := range c.bases {
		if base, ok := b.(*class); ok {
			if err := m.jvReady(base); err != nil {
				return err
			}
		}
	}
	in := c.scope
	ordinal := integer(0)
	face := strings.HasPrefix(jvHead(c.node, in.module.file), "interface")
	var run func(k *code.Node) error
	run = func(k *code.Node) error {
		switch {
		case k.Is(code.Block) && k.Name == ",":
			for _, b := range k.Kids {
				if err := run(b); err != nil {
					return err
				}
			}
		case k.Is(code.Bind) && k.Kid(1).Is(code.New) && k.Kids[1].Alias != "" && c.enum: // a constant
			args, err := m.jvArguments(k.Kids[1], in)
			if err != nil {
				return err
			}
			o := newObject()
			o.class = c
			o.set("\x00name", k.Kids[1].Alias)
			o.set("\x00ordinal", ordinal)
			ordinal++
			c.statics.set(k.Kids[1].Alias, o)
			c.tupled = append(c.tupled, o)
			if body := jvOwnBody(k.Kids[1], in.module.file); body != nil { // methods of its own
				o.class = &class{name: c.name, enum: true, node: &code.Node{Kind: code.Class, Off: body.Off, End: body.End, Kids: []*code.Node{{Kind: code.Array}, body}}, scope: in, statics: newObject(), methods: newObject(), bases: []any{c}}
			}
			return m.jvConstruct(c, o, args, spot{in.module.file, k})
		case k.Is(code.Bind) && (k.Flag&code.Static != 0 || face):
			v := jvZero(k.Alias)
			if k.Kid(1) != nil {
				var err error
				if v, err = m.eval(k.Kids[1], in); err != nil {
					return err
				}
				v = jvTyped(k.Alias, v)
			}
			c.statics.set(k.Kid(0).Name, v)
		case k.Is(code.Block) && jvStaticBlock(k, in.module.file):
			return m.block(k.Kids, in.inner())
		}
		return nil
	}
	for _, k := range c.node.Kid(1).Kids {
		if err := run(k); err != nil {
			return err
		}
	}
	return nil
}

// jvOwnBody is the body of a class without a name, behind what makes an object of it;
// nil where there is none.
func jvOwnBody(n *code.Node, f *code.File) *code.Node {
	if last := n.Kid(len(n.Kids) - 1); len(n.Kids) > 1 && last.Is(code.Func) && last.Name == "" && len(paramsOf(last.Kid(0))) == 0 && jvBody(last, f) {
		return last.Kid(1)
	}
	return nil
}

// jvRecord reports whether a class is a record that compares and shows its parts.
func jvRecord(c *class) bool {
	return c != nil && c.node != nil && c.scope != nil && strings.HasPrefix(jvHead(c.node, c.scope.module.file), "record")
}

// jvStaticBlock reports whether a block in a class stands behind the word static.
func jvStaticBlock(n *code.Node, f *code.File) bool {
	return strings.HasSuffix(strings.TrimSpace(string(f.Src[max(0, int(n.Off)-12):n.Off])), "static")
}

// jvZero is what a field of a type holds before it is set.
func jvZero(typ string) any {
	switch typ {
	case "int", "long", "short", "byte":
		return integer(0)
	case "boolean":
		return false
	case "double", "float":
		return 0.0
	case "char":
		return character(0)
	}
	return nil
}

// jvTyped is a value as a variable of a type holds it.
func jvTyped(typ string, v any) any {
	switch typ {
	case "double", "float", "Double":
		if i, ok := v.(integer); ok {
			return float64(i)
		}
	case "int", "long", "short", "byte":
		if c, ok := v.(character); ok {
			v = integer(c)
		}
		if n, ok := v.(integer); ok {
			switch typ {
			case "int":
				return integer(int32(n))
			case "short":
				return integer(int16(n))
			case "byte":
				return integer(int8(n))
			}
		}
	case "char":
		if i, ok := v.(integer); ok {
			return character(i)
		}
	}
	return v
}

// jvConstruct makes what an object of a class holds.
func (m *machine) jvConstruct(c *class, o *object, args []any, at spot) error {
	if m.depth++; m.depth > maxDepth {
		return spent("nested too deep")
	}
	defer func() { m.depth-- }()
	fields := func() error {
		in := c.scope.inner()
		in.this = o
		for _, k := range c.node.Kid(1).Kids {
			list := []*code.Node{k}
			if k.Is(code.Block) && k.Name == "," {
				list = k.Kids
			} else if k.Is(code.Block) && !jvStaticBlock(k, in.module.file) { // what every object begins with
				if err := m.block(k.Kids, in.inner()); err != nil {
					return err
				}
				continue
			}
			for _, b := range list {
				if !b.Is(code.Bind) || b.Flag&code.Static != 0 || c.enum && b.Kid(1).Is(code.New) && b.Kids[1].Alias != "" {
					continue
				}
				v := jvZero(b.Alias)
				if b.Kid(1) != nil {
					var err error
					if v, err = m.eval(b.Kids[1], in); err != nil {
						return err
					}
					v = jvTyped(b.Alias, v)
				}
				o.set(b.Kid(0).Name, v)
			}
		}
		return nil
	}
	var base *class
	for _, b := range c.bases {
		if x, ok := b.(*class); ok && !strings.HasPrefix(jvHead(x.node, x.scope.module.file), "interface") {
			base = x
		}
	}
	var record *code.Node
	var makers []*function
	var compact *code.Node
	for i, k := range c.node.Kid(1).Kids {
		switch {
		case k.Is(code.Func) && k.Name == "constructor":
			record = k
		case k.Is(code.Func) && k.Name == c.name && c.name != "":
			makers = append(makers, &function{name: c.name, node: k, scope: c.scope, home: c})
		case k.Is(code.ExprStmt) && k.Kid(0).Is(code.Name) && k.Kids[0].Name == c.name && i+1 < len(c.node.Kids[1].Kids) && c.node.Kids[1].Kids[i+1].Is(code.Block):
			compact = c.node.Kids[1].Kids[i+1]
		}
	}
	f := jvChoose(makers, args)
	if f == nil && record != nil {
		params := paramsOf(record.Kid(0))
		if len(args) != len(params) {
			return giveUp("how %s is made", c.name)
		}
		in := c.scope.inner()
		in.this, in.own = o, true
		for i, p := range params {
			in.declare(p.Name, jvTyped(p.Alias, args[i]))
		}
		if compact != nil {
			if err := m.block(compact.Kids, in); err != nil {
				return err
			}
		}
		for _, p := range params {
			o.set(p.Name, in.vars[p.Name].v)
		}
		return nil
	}
	if f == nil {
		if len(makers) > 0 || len(args) > 0 && base == nil && outer(c) == nil {
			return giveUp("how %s is made", c.name)
		}
		if base != nil {
			if err := m.jvConstruct(base, o, args, at); err != nil {
				return err
			}
		} else if b := outer(c); b != nil && len(args) > 0 {
			o.set("message", args[0])
		}
		return fields()
	}
	// this(…) and super(…) stand first.
	if first := f.node.Kid(1).Kid(0); first.Is(code.ExprStmt) && first.Kid(0).Is(code.Call) && first.Kids[0].Kid(0).Is(code.Name) && (first.Kids[0].Kids[0].Name == "this" || first.Kids[0].Kids[0].Name == "super") {
		call := first.Kids[0]
		in, err := m.jvScope(f, o, args)
		if err != nil {
			return err
		}
		with, err := m.jvArguments(call, in)
		if err != nil {
			return err
		}
		switch {
		case call.Kids[0].Name == "this":
			if err := m.jvConstruct(c, o, with, at); err != nil {
				return err
			}
		case base != nil:
			if err := m.jvConstruct(base, o, with, at); err != nil {
				return err
			}
			if err := fields(); err != nil {
				return err
			}
		default:
			if len(with) > 0 {
				o.set("message", with[0])
			}
			if b := outer(c); b != nil {
				m.note(&opaque{path: b.path + "()", recv: b}, with, nil, spot{f.scope.module.file, call})
			}
			if err := fields(); err != nil {
				return err
			}
		}
		err = m.block(f.node.Kid(1).Kids[1:], in)
		if l, ok := err.(*leave); ok && l.kind == "return" {
			return nil
		}
		return err
	}
	if base != nil {
		if err := m.jvConstruct(base, o, nil, at); err != nil {
			return err
		}
	}
	if record != nil {
		for _, p := range paramsOf(record.Kid(0)) {
			o.set(p.Name, nil)
		}
	}
	if err := fields(); err != nil {
		return err
	}
	_, err := m.jvInvoke(f, o, args, at)
	return err
}

// jvScope is the scope of a call of a method.
func (m *machine) jvScope(f *function, this any, args []any) (*scope, error) {
	s := &scope{vars: map[string]*cell{}, up: f.scope, module: f.scope.module, this: this, fn: f, own: true, static: f.scope.module.file.Funcs[f.node]}
	params := paramsOf(f.node.Kid(0))
	for i, p := range params {
		switch {
		case p.Flag&code.Rest != 0:
			l := &list{}
			if i < len(args) {
				if given, ok := args[i].(*list); ok && len(args) == len(params) && p.Alias != "Object" {
					l = given
				} else {
					l.items = slices.Clone(args[i:])
				}
			}
			s.declare(p.Name, l)
		case i < len(args):
			s.declare(p.Name, jvTyped(p.Alias, args[i]))
		default:
			return nil, giveUp("a missing argument of %s", f.name)
		}
	}
	return s, nil
}

// jvInvoke runs a method or a lambda.
func (m *machine) jvInvoke(f *function, this any, args []any, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if f.native != nil {
		return f.native(m, this, args, nil, at)
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	if f.bound { // a lambda
		this = f.this
		if params := paramsOf(f.node.Kid(0)); len(args) > len(params) {
			args = args[:len(params)]
		}
	}
	s, err := m.jvScope(f, this, args)
	if err != nil {
		return nil, err
	}
	if f.bound {
		s.own = false
		s.fn = f.scope.fn
	}
	body := f.node.Kid(1)
	if f.node.Flag&code.Arrow != 0 {
		return m.eval(body, s)
	}
	err = m.block(body.Kids, s)
	if l, ok := err.(*leave); ok && l.kind == "return" {
		if l.v == any(undefined) {
			return nil, nil
		}
		return l.v, nil
	}
	return nil, err
}

func (m *machine) jvArguments(n *code.Node, s *scope) ([]any, error) {
	var args []any
	for _, a := range n.Args() {
		if a.Is(code.Func) && len(paramsOf(a.Kid(0))) == 0 && a.Name == "" && n.Is(code.New) && a == n.Kids[len(n.Kids)-1] && jvBody(a, s.module.file) {
			continue // the body of a class without a name
		}
		v, err := m.eval(a, s)
		if err != nil {
			return nil, err
		}
		args = append(args, v)
	}
	return args, nil
}

// jvBody reports whether a function stands for the body of a class.
func jvBody(n *code.Node, f *code.File) bool {
	return int(n.Off) < len(f.Src) && f.Src[n.Off] == '{'
}

// jvStatement runs what Java has of its own; done is false for what all
// languages have.
func (m *machine) jvStatement(n *code.Node, s *scope) (done bool, err error) {
	switch n.Kind {
	case code.Bind:
		v := jvZero(n.Alias)
		if n.Kid(1) == nil {
			if !primitive[n.Alias] {
				v = nil
			}
		} else if v, err = m.eval(n.Kids[1], s); err != nil {
			return true, err
		}
		if n.Name == "" { // a name that is set
			return true, m.jvSet(n.Kid(0).Name, v, s)
		}
		s.declare(n.Kid(0).Name, jvTyped(n.Alias, v))
		if n.Alias == "int" || n.Alias == "short" || n.Alias == "byte" { // what does not fit wraps
			s.vars[n.Kids[0].Name].typ = n.Alias
		}
		return true, nil
	case code.Class:
		c, err := m.jvClass(n, s)
		if err != nil {
			return true, err
		}
		s.declare(n.Name, c)
		return true, nil
	case code.Jump:
		if n.Name != "yield" {
			return false, nil
		}
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return true, err
		}
		return true, &leave{kind: "yield", v: v}
	case code.Throw:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return true, err
		}
		if o, ok := v.(*opaque); ok {
			name := strings.TrimSuffix(o.path, "()")
			msg := ""
			if len(o.args) > 0 {
				msg = jvShow(o.args[0])
			}
			return true, raise(name[strings.LastIndexByte(name, '.')+1:], msg)
		}
		return true, &thrown{v}
	case code.Func:
		return true, nil
	}
	return false, nil
}

// jvErrors are the classes that errors of Java come from (Java SE 25, package
// java.lang and others).
var jvErrors = map[string]string{
	"Exception": "Throwable", "Error": "Throwable", "RuntimeException": "Exception", "IllegalArgumentException": "RuntimeException", "NumberFormatException": "IllegalArgumentException", "NullPointerException": "RuntimeException",
	"IllegalStateException": "RuntimeException", "IndexOutOfBoundsException": "RuntimeException", "ArrayIndexOutOfBoundsException": "IndexOutOfBoundsException", "StringIndexOutOfBoundsException": "IndexOutOfBoundsException",
	"ArithmeticException": "RuntimeException", "ClassCastException": "RuntimeException", "UnsupportedOperationException": "RuntimeException", "NoSuchElementException": "RuntimeException", "InputMismatchException": "NoSuchElementException",
	"UncheckedIOException": "RuntimeException", "IOException": "Exception", "FileNotFoundException": "IOException", "NoSuchFileException": "IOException", "UnknownHostException": "IOException", "InterruptedException": "Exception", "MissingResourceException": "RuntimeException", "UnknownFormatException": "IllegalArgumentException",
	"BindException": "IOException", "InvalidPathException": "IllegalArgumentException", "PatternSyntaxException": "IllegalArgumentException",
}

// jvValue is what a statement gives that stands for an expression.
func (m *machine) jvValue(n *code.Node, s *scope) (any, error) {
	switch {
	case n == nil:
		return nil, giveUp("a choice without a way")
	case n.Is(code.If):
		yes, err := m.holds(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		if yes {
			return m.jvValue(n.Kid(1), s)
		}
		return m.jvValue(n.Kid(2), s)
	case n.Is(code.Block) && len(n.Kids) == 1 && n.Kids[0].Is(code.ExprStmt):
		return m.eval(n.Kids[0].Kid(0), s)
	}
	_, err := m.statement(n, s)
	if l, ok := err.(*leave); ok && l.kind == "yield" {
		return l.v, nil
	}
	if err == nil {
		err = giveUp("a choice without a value")
	}
	return nil, err
}

// jvSized is an array that is made with so many elements.
func (m *machine) jvSized(sizes []*code.Node, typ string, s *scope) (any, error) {
	if len(sizes) == 0 {
		return nil, nil
	}
	v, err := m.eval(sizes[0], s)
	if err != nil {
		return nil, err
	}
	n, ok := v.(integer)
	if !ok || n > maxItems {
		return nil, undecided("an array of a size that is not known")
	}
	if n < 0 {
		return nil, raise("NegativeArraySizeException", show(n))
	}
	l := &list{}
	for range n {
		x := jvZero(typ)
		if len(sizes) > 1 {
			if x, err = m.jvSized(sizes[1:], typ, s); err != nil {
				return nil, err
			}
		}
		l.items = append(l.items, x)
	}
	return l, m.use(int(n))
}

// jvSet gives a variable or a field its value.
func (m *machine) jvSet(name string, v any, s *scope) error {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			if _, ok := c.v.(float64); ok {
				v = jvTyped("double", v)
			}
			if c.v = v; c.typ != "" {
				c.v = jvTyped(c.typ, v)
			}
			return nil
		}
		if o, ok := x.this.(*object); ok {
			if c := o.cells[name]; c != nil {
				c.v = v
				return nil
			}
		}
		if c, ok := x.this.(*class); ok {
			for _, k := range c.line() {
				if cell := k.statics.cells[name]; cell != nil {
					cell.v = v
					return nil
				}
			}
		}
	}
	if o, ok := s.this.(*object); ok {
		o.set(name, v)
		return nil
	}
	return giveUp("the variable %s is not found", name)
}

func (m *machine) jvName(n *code.Node, s *scope) (any, error) {
	name := n.Name
	switch name {
	case "this":
		return s.this, nil
	case "super":
		return s.this, nil
	}
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return m.read(c)
		}
		if o, ok := x.this.(*object); ok {
			if c := o.cells[name]; c != nil {
				return m.read(c)
			}
		}
		if c, ok := x.this.(*class); ok && x.own {
			for _, k := range c.line() {
				if err := m.jvReady(k); err != nil {
					return nil, err
				}
				if cell := k.statics.cells[name]; cell != nil {
					return m.read(cell)
				}
			}
		}
	}
	if v := m.jvNamed(name, s); v != nil {
		return v, nil
	}
	for _, i := range s.module.file.Imports { // what is imported from a class
		of, ok := strings.CutSuffix(i.Node.Name, "."+name)
		if !ok {
			of, ok = strings.CutSuffix(i.Node.Name, ".*")
		}
		if !ok {
			continue
		}
		if to, ok := m.e.Loader.Resolve(s.module.file, of, ""); ok {
			if g := m.e.Loader.File(to); g != nil {
				if c := m.jvTop(g, of[strings.LastIndexByte(of, '.')+1:]); c != nil {
					if err := m.jvReady(c); err != nil {
						return nil, err
					}
					if v, ok := classKey(c, name, true); ok {
						return v, nil
					}
				}
			}
		}
	}
	return m.package1(name), nil
}

// jvNode evaluates what Java has of its own; done is false for what all
// languages have.
func (m *machine) jvNode(n *code.Node, s *scope) (v any, done bool, err error) {
	at := spot{s.module.file, n}
	switch n.Kind {
	case code.String:
		if src := s.module.file.Src; int(n.Off) < len(src) && src[n.Off] == '\'' {
			for _, r := range n.Name {
				return character(r), true, nil
			}
		}
		return n.Name, true, nil
	case code.Number:
		text := strings.ReplaceAll(n.Name, "_", "")
		if i, err := strconv.ParseInt(text, 0, 64); err == nil {
			src := s.module.file.Src
			if end := int(n.End); end <= len(src) && end > 0 && strings.IndexByte("dDfF", src[end-1]) >= 0 && !strings.HasPrefix(text, "0x") {
				return float64(i), true, nil
			}
			return integer(i), true, nil
		}
		return nil, false, nil
	case code.Name:
		v, err := m.jvName(n, s)
		return v, true, err
	case code.Member:
		v, err := m.jvMember(n, s)
		return v, true, err
	case code.Unknown:
		if n.Name == code.Sized {
			v, err := m.jvSized(n.Kids, n.Alias, s)
			return v, true, err
		}
	case code.Index:
		base, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, true, err
		}
		k, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, true, err
		}
		l, ok := base.(*list)
		i, whole := k.(integer)
		if !ok || !whole {
			return dontKnow("an element of what is not known"), true, nil
		}
		if i < 0 || int(i) >= len(l.items) {
			return nil, true, raise("ArrayIndexOutOfBoundsException", "index out of bounds")
		}
		return l.items[i], true, nil
	case code.Call:
		v, err := m.jvCall(n, s)
		return v, true, err
	case code.New:
		v, err := m.jvNew(n, s)
		return v, true, err
	case code.Func:
		return &function{node: n, scope: s, this: s.this, bound: true}, true, nil
	case code.Array:
		if n.Name == code.LastOf && n.Alias == code.Whole {
			v, err := m.jvValue(n.Kid(0), s)
			return v, true, err
		}
	case code.Binary:
		v, err := m.jvBinary(n, s)
		return v, true, err
	case code.Assign:
		v, err := m.jvAssign(n, s)
		return v, true, err
	case code.Unary:
		switch n.Name {
		case "++", "--":
			old, err := m.eval(n.Kid(0), s)
			if err != nil {
				return nil, true, err
			}
			next, err := m.jvOperate(n.Name[:1], old, integer(1), s, at)
			if err != nil {
				return nil, true, err
			}
			if c, ok := old.(character); ok {
				next = c + 1
				if n.Name == "--" {
					next = c - 1
				}
			}
			if err := m.assign(n.Kids[0], next, s, ""); err != nil {
				return nil, true, err
			}
			if n.Off < n.Kids[0].Off {
				return next, true, nil
			}
			return old, true, nil
		}
	case code.Block, code.ExprStmt, code.If, code.Throw, code.Bind:
		_, err := m.statement(n, s)
		return nil, true, err
	}
	return nil, false, nil
}

func (m *machine) jvMember(n *code.Node, s *scope) (any, error) {
	if d := n.Dotted(); d != "" && n.Flag&code.Address == 0 { // java.net.X, A.B
		head, _, _ := strings.Cut(d, ".")
		if s.find(head) == nil && head != "this" && head != "super" && head[0] >= 'a' && head[0] <= 'z' && n.Name[0] >= 'A' && n.Name[0] <= 'Z' {
			if _, isVar := m.jvField(head, s); !isVar {
				if to, ok := m.e.Loader.Resolve(s.module.file, d, ""); ok {
					if g := m.e.Loader.File(to); g != nil {
						if c := m.jvTop(g, n.Name); c != nil {
							return c, nil
						}
					}
				}
				return m.package1(value.Platform(d)), nil
			}
		}
	}
	base, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	if n.Flag&code.Address != 0 {
		return m.jvReference(base, n, s), nil
	}
	switch b := base.(type) {
	case *class:
		if err := m.jvReady(b); err != nil {
			return nil, err
		}
		if n.Name == "this" {
			for x := s; x != nil; x = x.up {
				if o, ok := x.this.(*object); ok && derives(o.class, b) {
					return o, nil
				}
			}
		}
		if v, ok := classKey(b, n.Name, true); ok {
			return v, nil
		}
		if in := m.jvInner(b, n.Name); in != nil {
			return in, nil
		}
		if n.Name == "class" {
			return &opaque{path: b.name + ".class", of: b}, nil
		}
		return nil, giveUp("%s is not found in %s", n.Name, b.name)
	case *object:
		if c := b.cells[n.Name]; c != nil {
			return c.v, nil
		}
		if b.class != nil {
			for _, k := range b.class.line() {
				if err := m.jvReady(k); err != nil {
					return nil, err
				}
			}
			if v, ok := classKey(b.class, n.Name, true); ok {
				return v, nil
			}
		}
		return nil, giveUp("the field %s", n.Name)
	case *list:
		if n.Name == "length" {
			return integer(len(b.items)), nil
		}
	case nil:
		return nil, raise("NullPointerException", n.Name)
	case *opaque:
		switch b.path + "." + n.Name {
		case "Integer.MAX_VALUE":
			return integer(math.MaxInt32), nil
		case "Integer.MIN_VALUE":
			return integer(math.MinInt32), nil
		case "Short.MAX_VALUE":
			return integer(math.MaxInt16), nil
		case "Long.MAX_VALUE":
			return integer(math.MaxInt64), nil
		case "Character.MAX_VALUE":
			return character(65535), nil
		case "File.separator", "File.separatorChar":
			return "/", nil
		case "Boolean.TRUE":
			return true, nil
		case "Boolean.FALSE":
			return false, nil
		}
		if b.path != "" {
			if b.props != nil {
				if v, ok := b.props.get(n.Name); ok {
					return v, nil
				}
			}
			return &opaque{path: b.path + "." + n.Name, recv: b}, nil
		}
		return b, nil
	}
	return nil, undecided("the field %s of what is not known", n.Name)
}

// jvField finds a variable or a field of what surrounds.
func (m *machine) jvField(name string, s *scope) (any, bool) {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c.v, true
		}
		switch t := x.this.(type) {
		case *object:
			if c := t.cells[name]; c != nil {
				return c.v, true
			}
		case *class:
			for _, k := range t.line() {
				if m.jvReady(k) == nil && k.statics.cells[name] != nil {
					return k.statics.cells[name].v, true
				}
			}
		}
	}
	return nil, false
}

// jvReference is a method as a value: Class::method, object::method, Class::new.
func (m *machine) jvReference(base any, n *code.Node, s *scope) any {
	name := n.Name
	return &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
		switch b := base.(type) {
		case *class:
			if name == "new" {
				return m.jvMake(b, args, at)
			}
			if f := jvChoose(slices.DeleteFunc(jvMethods(b, name, false), func(f *function) bool { return !f.static }), args); f != nil {
				if err := m.jvReady(b); err != nil {
					return nil, err
				}
				return m.jvInvoke(f, undefined, args, at)
			}
			if len(args) > 0 {
				return m.jvSend(args[0], name, args[1:], s, at)
			}
		case *opaque:
			if name == "new" {
				return m.jvOutside(b, "()", args, s, at)
			}
			if v, done, err := m.jvStatic(b, name, args, s, at); done || err != nil {
				return v, err
			}
			if len(args) > 0 && known(args[0]) {
				return m.jvSend(args[0], name, args[1:], s, at)
			}
			return m.jvOutside(b, "."+name, args, s, at)
		}
		return m.jvSend(base, name, args, s, at)
	}}
}

func (m *machine) jvNew(n *code.Node, s *scope) (any, error) {
	args, err := m.jvArguments(n, s)
	if err != nil {
		return nil, err
	}
	at := spot{s.module.file, n}
	body := jvOwnBody(n, s.module.file)
	base := m.jvNamed(n.Kid(0).Dotted(), s)
	if body != nil { // a class without a name
		c := &class{node: &code.Node{Kind: code.Class, Off: body.Off, End: body.End, Kids: []*code.Node{{Kind: code.Array}, body}}, scope: s, statics: newObject(), methods: newObject()}
		if base != nil {
			c.bases = []any{base}
		}
		return m.jvMake(c, args, at)
	}
	switch b := base.(type) {
	case *class:
		return m.jvMake(b, args, at)
	case *opaque:
		return m.jvOutside(b, "()", args, s, at)
	}
	return nil, giveUp("what is made anew: %s", s.module.file.Text(n))
}

func (m *machine) jvMake(c *class, args []any, at spot) (any, error) {
	if err := m.jvReady(c); err != nil {
		return nil, err
	}
	o := newObject()
	o.class, o.made = c, &at
	if err := m.jvConstruct(c, o, args, at); err != nil {
		return nil, err
	}
	return o, nil
}

func (m *machine) jvCall(n *code.Node, s *scope) (any, error) {
	callee := n.Kid(0)
	at := spot{s.module.file, n}
	if src := s.module.file.Src; callee.Is(code.Name) && len(n.Kids) == 2 && int(n.Off) < len(src) && src[n.Off] == '(' && callee.Off > n.Off { // a cast
		v, err := m.eval(n.Kids[1], s)
		if err != nil {
			return nil, err
		}
		switch callee.Name {
		case "int", "long", "short", "byte":
			if f, ok := v.(float64); ok {
				return integer(math.Trunc(f)), nil
			}
			return jvTyped(callee.Name, v), nil
		case "double", "float":
			return jvTyped("double", v), nil
		case "char":
			return jvTyped("char", v), nil
		}
		return v, nil
	}
	args, err := m.jvArguments(n, s)
	if err != nil {
		return nil, err
	}
	switch {
	case callee.Is(code.Name):
		name := callee.Name
		for x := s; x != nil; x = x.up {
			switch t := x.this.(type) {
			case *object:
				if t.class != nil {
					if f := jvChoose(jvMethods(t.class, name, false), args); f != nil {
						return m.jvDispatch(f, t, args, at)
					}
					if c := t.cells[name]; c != nil && len(args) == 0 && slices.ContainsFunc(t.class.node.Kid(1).Kids, func(k *code.Node) bool { return k.Is(code.Func) && k.Name == "constructor" }) {
						return c.v, nil // of a record
					}
					if v, done, err := m.jvObject(t, name, args, s, at); done || err != nil {
						return v, err
					}
				}
			case *function: // what a lambda is for, from within
				of := x
				for of != nil && (of.fn == nil || of.fn.home == nil) {
					of = of.up
				}
				if of == nil {
					break
				}
				if f := jvChoose(jvMethods(of.fn.home, name, false), args); f != nil {
					return m.jvDispatch(f, t, args, at)
				}
				return m.jvApply(t, args, s, at)
			case *class:
				if f := jvChoose(jvMethods(t, name, false), args); f != nil {
					if err := m.jvReady(t); err != nil {
						return nil, err
					}
					return m.jvDispatch(f, undefined, args, at)
				}
				if v, done, err := m.jvEnum(t, name, args); done || err != nil {
					return v, err
				}
			}
		}
		for _, i := range s.module.file.Imports { // a function of a class
			of, ok := strings.CutSuffix(i.Node.Name, "."+name)
			if !ok {
				of, ok = strings.CutSuffix(i.Node.Name, ".*")
			}
			if !ok {
				continue
			}
			if to, found := m.e.Loader.Resolve(s.module.file, of, ""); found {
				if g := m.e.Loader.File(to); g != nil {
					if c := m.jvTop(g, of[strings.LastIndexByte(of, '.')+1:]); c != nil {
						if f := jvChoose(jvMethods(c, name, false), args); f != nil {
							if err := m.jvReady(c); err != nil {
								return nil, err
							}
							return m.jvInvoke(f, undefined, args, at)
						}
					}
				}
			} else if strings.HasSuffix(i.Node.Name, "."+name) {
				return m.jvOutside(m.package1(value.Platform(of)), "."+name, args, s, at)
			}
		}
		for _, x := range m.jvOuters(s) { // of the class from outside that this one comes from
			return m.jvOutside(x, "."+name, args, s, at)
		}
		return m.jvOutside(m.package1(name), "", args, s, at)
	case callee.Is(code.Member):
		if k := callee.Kid(0); k.Is(code.Name) && k.Name == "super" {
			o, _ := s.this.(*object)
			x := s
			for x != nil && (x.fn == nil || x.fn.home == nil) {
				x = x.up
			}
			if o == nil || x == nil {
				return nil, giveUp("a base that is not followed")
			}
			var list []*function
			for _, c := range x.fn.home.line()[1:] {
				list = append(list, jvMethods(c, callee.Name, true)...)
			}
			if f := jvChoose(list, args); f != nil {
				return m.jvInvoke(f, o, args, at)
			}
			return dontKnow("what a base gives"), nil
		}
		base, err := m.eval(callee.Kid(0), s)
		if err != nil {
			return nil, err
		}
		return m.jvSend(base, callee.Name, args, s, at)
	}
	fn, err := m.eval(callee, s)
	if err != nil {
		return nil, err
	}
	if f, ok := fn.(*function); ok {
		return m.jvInvoke(f, undefined, args, at)
	}
	return nil, giveUp("what is called is no function")
}

// jvOuters are the classes from outside that those around come from.
func (m *machine) jvOuters(s *scope) (list []*opaque) {
	for x := s; x != nil; x = x.up {
		c, _ := x.this.(*class)
		if o, ok := x.this.(*object); ok {
			c = o.class
		}
		if c != nil {
			if b := outer(c); b != nil {
				list = append(list, b)
			}
		}
	}
	return list
}

// jvDispatch calls a method of an object: that of its own class, where it has
// one of the name.
func (m *machine) jvDispatch(f *function, this any, args []any, at spot) (any, error) {
	if f.static {
		if err := m.jvReady(f.home); err != nil {
			return nil, err
		}
		return m.jvInvoke(f, f.home, args, at)
	}
	return m.jvInvoke(f, this, args, at)
}

// jvSend calls a method of a value.
func (m *machine) jvSend(base any, name string, args []any, s *scope, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	switch b := base.(type) {
	case nil, undef:
		return nil, raise("NullPointerException", name)
	case *class:
		if f := jvChoose(jvMethods(b, name, false), args); f != nil {
			return m.jvDispatch(f, b, args, at)
		}
		if v, done, err := m.jvEnum(b, name, args); done || err != nil {
			return v, err
		}
		if o := outer(b); o != nil {
			return m.jvOutside(o, "."+name, args, s, at)
		}
		return nil, giveUp("%s is not found in %s", name, b.name)
	case *object:
		if b.class != nil && !b.class.builtin {
			if f := jvChoose(jvMethods(b.class, name, false), args); f != nil {
				return m.jvDispatch(f, b, args, at)
			}
			if c := b.cells[name]; c != nil && len(args) == 0 { // of a record
				return c.v, nil
			}
			if v, done, err := m.jvObject(b, name, args, s, at); done || err != nil {
				return v, err
			}
			if o := outer(b.class); o != nil {
				return m.jvOutside(&opaque{path: o.path + "()", recv: o}, "."+name, args, s, at)
			}
			return nil, giveUp("the method %s of %s", name, b.class.name)
		}
		if b.class != nil && b.class.methods.cells[name] != nil { // one of this package
			if f, ok := b.class.methods.cells[name].v.(*function); ok && f.native != nil {
				return f.native(m, b, args, nil, at)
			}
		}
	case *opaque:
		if b.path == "" {
			m.jvHanded(args, name, at)
			return dontKnow("what " + firstOf(b.why, name) + " gives"), nil
		}
		if v, done, err := m.jvStatic(b, name, args, s, at); done || err != nil {
			return v, err
		}
		return m.jvOutside(b, "."+name, args, s, at)
	case *function:
		return m.jvFunction(b, name, args, s, at)
	}
	v, done, err := m.jvMethod(base, name, args, s, at)
	if !done && err == nil {
		err = giveUp("the method %s", name)
	}
	return v, err
}

// jvBeside reads the files of the package of a file, and those that it imports: what
// a lambda is for may stand there.
func (m *machine) jvBeside(f *code.File) {
	if m.readIn == nil {
		m.readIn = map[string]bool{}
	}
	dir := f.Name[:strings.LastIndexByte(f.Name, '/')+1]
	for _, i := range f.Imports {
		if to, ok := m.e.Loader.Resolve(f, i.Node.Name, ""); ok && !m.readIn[to] {
			m.readIn[to] = true
			m.e.Loader.File(to)
		}
	}
	if m.readIn[dir] {
		return
	}
	m.readIn[dir] = true
	list := m.e.Loader.Beside(strings.TrimSuffix(dir, "/"))
	for _, name := range list[:min(len(list), maxBeside)] {
		if strings.HasSuffix(name, ".java") {
			m.e.Loader.File(name)
		}
	}
}

const maxBeside = 400

// jvFunction calls a lambda by the method of its interface, or joins it with
// another.
func (m *machine) jvFunction(f *function, name string, args []any, s *scope, at spot) (any, error) {
	m.jvBeside(at.f)
	var of []*class // the interfaces with such a method: the lambda is for one
	for _, g := range m.e.Loader.Loaded() {
		for _, k := range g.Classes {
			if g.Lang != code.Java || !strings.HasPrefix(jvHead(k, g), "interface") {
				continue
			}
			for _, d := range k.Kid(1).Kids {
				if d.Is(code.Func) && d.Name == name && d.Kid(1) != nil && d.Kids[1].Off < d.Kids[1].End {
					if c := m.jvAt(g, k); c != nil && !slices.Contains(of, c) {
						of = append(of, c)
					}
				}
			}
		}
	}
	if len(of) == 1 {
		if d := jvChoose(jvMethods(of[0], name, false), args); d != nil && !d.static {
			return m.jvInvoke(d, f, args, at)
		}
	}
	if len(of) > 0 {
		return nil, giveUp("the method %s of what a lambda is for", name)
	}
	switch name {
	case "andThen", "compose":
		g := first(args)
		return &function{native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
			p, q := any(f), g
			if name == "compose" {
				p, q = g, f
			}
			v, err := m.jvApply(p, a, s, at)
			if err != nil {
				return nil, err
			}
			return m.jvApply(q, []any{v}, s, at)
		}}, nil
	case "negate", "and", "or":
		g := first(args)
		return &function{native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
			v, err := m.jvApply(f, a, s, at)
			if err != nil {
				return nil, err
			}
			yes, ok := v.(bool)
			if !ok {
				return dontKnow("whether something holds"), nil
			}
			if name == "negate" {
				return !yes, nil
			}
			if yes == (name == "or") {
				return yes, nil
			}
			return m.jvApply(g, a, s, at)
		}}, nil
	}
	return m.jvInvoke(f, f.this, args, at)
}

// jvApply calls what is handed over as a function.
func (m *machine) jvApply(fn any, args []any, s *scope, at spot) (any, error) {
	switch f := fn.(type) {
	case *function:
		return m.jvInvoke(f, f.this, args, at)
	case *object: // an object of a class with one method
		if f.class != nil && f.class.node != nil {
			for name := range strings.FieldsSeq(jvFunctional) {
				if own := jvChoose(jvMethods(f.class, name, false), args); own != nil && len(paramsOf(own.node.Kid(0))) == len(args) {
					return m.jvDispatch(own, f, args, at)
				}
			}
			for _, k := range f.class.node.Kid(1).Kids {
				if k.Is(code.Func) && k.Name != f.class.name && k.Flag&code.Static == 0 && len(paramsOf(k.Kid(0))) == len(args) {
					return m.jvInvoke(&function{name: k.Name, node: k, scope: f.class.scope, home: f.class}, f, args, at)
				}
			}
		}
	case *opaque:
		if strings.HasSuffix(f.path, ".identity()") && len(args) == 1 {
			return args[0], nil
		}
		return dontKnow("what " + f.String() + " gives"), nil
	}
	return nil, giveUp("what is called is no function")
}

// jvFunctional are the methods of the interfaces that the library calls (Java SE 21,
// java.lang.Runnable, java.util.concurrent.Callable, java.util.function,
// java.util.Comparator, com.sun.net.httpserver.HttpHandler).
const jvFunctional = "run call get getAsInt getAsLong getAsBoolean apply accept test applyAsInt applyAsLong applyAsDouble compare handle"

// jvOutside calls something of a library: what comes behind the path says
// which.
func (m *machine) jvOutside(o *opaque, what string, args []any, s *scope, at spot) (any, error) {
	if what == "()" {
		if v, done, err := m.jvNewOf(o, args, s, at); done || err != nil {
			return v, err
		}
	}
	if o.path == "" {
		return dontKnow("what " + o.why + " gives"), nil
	}
	fn := &opaque{path: o.path + strings.TrimSuffix(what, "()"), recv: o}
	if what == "()" {
		fn = o
	}
	if m.note(fn, args, nil, at) {
		return nil, &exit{stays: true}
	}
	if strings.HasSuffix(fn.path, ".isClosed") || strings.HasSuffix(fn.path, ".isInterrupted") { // what the loops of a server ask
		return false, nil
	}
	m.jvHanded(args, fn.path[strings.LastIndexByte(fn.path, '.')+1:], at)
	if len(fn.path) > 400 {
		return dontKnow("a chain of calls"), nil
	}
	return &opaque{path: fn.path + "()", recv: fn, args: args, fresh: what == "()" || makers[fn.path]}, nil
}

// jvHanded notes functions that are given away.
func (m *machine) jvHanded(args []any, name string, at spot) {
	for _, a := range args {
		m.waiting = m.waiting || holdsCode(a, 0)
		switch x := a.(type) { // its methods may be called
		case *object:
			m.waiting = m.waiting || x.class != nil && x.class.node != nil
		case *opaque:
			m.waiting = m.waiting || strings.HasSuffix(x.path, ".class")
		}
		if f, ok := a.(*function); ok {
			m.turned(f, name)
		}
		if f, ok := a.(*function); ok && !passed[name] && f.node != nil && name != "createContext" {
			m.kept = append(m.kept, job{f, nil, at})
		}
	}
}

func (m *machine) jvAssign(n *code.Node, s *scope) (any, error) {
	sign := strings.TrimSuffix(n.Name, "=")
	if sign == "" {
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		return v, m.assign(n.Kids[0], v, s, "")
	}
	a, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	v, err := m.jvOperate(sign, a, b, s, spot{s.module.file, n})
	if err != nil {
		return nil, err
	}
	switch a.(type) {
	case integer:
		if f, isFloat := v.(float64); isFloat {
			v = integer(math.Trunc(f))
		}
	case character:
		v = jvTyped("char", v)
	}
	return v, m.assign(n.Kids[0], v, s, "")
}

// jvAssignTo gives a value to a target.
func (m *machine) jvAssignTo(to *code.Node, v any, s *scope, kind string) error {
	switch to.Kind {
	case code.Name:
		if kind != "" {
			s.declare(to.Name, v)
			return nil
		}
		return m.jvSet(to.Name, v, s)
	case code.Bind:
		s.declare(to.Kid(0).Name, v)
		return nil
	case code.Member:
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		switch b := base.(type) {
		case *object:
			if old := b.cells[to.Name]; old != nil {
				if _, ok := old.v.(float64); ok {
					v = jvTyped("double", v)
				}
			}
			b.set(to.Name, v)
		case *class:
			b.statics.set(to.Name, v)
		case nil:
			return raise("NullPointerException", to.Name)
		case *opaque:
			if b.path != "" {
				if b.props == nil {
					b.props = newObject()
				}
				b.props.set(to.Name, v)
			}
		}
		return nil
	case code.Index:
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		k, err := m.eval(to.Kid(1), s)
		if err != nil {
			return err
		}
		l, ok := base.(*list)
		i, whole := k.(integer)
		if !ok || !whole {
			return undecided("an element of what is not known")
		}
		if i < 0 || int(i) >= len(l.items) {
			return raise("ArrayIndexOutOfBoundsException", "index out of bounds")
		}
		l.items[i] = v
		return nil
	}
	return giveUp("a target that is not followed")
}

func (m *machine) jvBinary(n *code.Node, s *scope) (any, error) {
	at := spot{s.module.file, n}
	if n.Name == "instanceof" {
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		yes, ok := m.jvIs(v, m.jvNamed(n.Kid(1).Dotted(), s))
		if !ok {
			return dontKnow("what class something is of"), nil
		}
		if n.Alias != "" && yes {
			s.declare(n.Alias, v)
		}
		return yes, nil
	}
	a, err := m.subject(n, s)
	if err != nil {
		return nil, err
	}
	if n.Alias == code.When || n.Alias == code.Again { // a case of a choice
		k := n.Kid(1)
		if o, ok := a.(*object); ok && k.Is(code.Name) && o.cells["\x00name"] != nil {
			return o.cells["\x00name"].v == any(k.Name), nil
		}
		if a == nil && !k.Is(code.Null) {
			return nil, raise("NullPointerException", "the subject of a choice")
		}
		b, err := m.eval(k, s)
		if err != nil {
			return nil, err
		}
		same, ok := jvEqual(a, b)
		if !ok {
			return dontKnow("whether a case fits"), nil
		}
		return same, nil
	}
	switch n.Name {
	case "||", "&&":
		yes, err := m.decide(a, s, n.Kid(0))
		if err != nil {
			return m.oneOf(err, s, n.Kid(1))
		}
		if yes == (n.Name == "||") {
			return yes, nil
		}
		b, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		if yes, err = m.decide(b, s, n.Kid(1)); err != nil {
			return m.oneOf(err, s)
		}
		return yes, nil
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	return m.jvOperate(n.Name, a, b, s, at)
}

// jvIs reports whether a value is of a class; ok is false where that is not
// known.
func (m *machine) jvIs(v, of any) (yes, ok bool) {
	if v == nil {
		return false, true
	}
	switch c := of.(type) {
	case *class:
		o, isObject := v.(*object)
		return isObject && o.class != nil && derives(o.class, c), known(v)
	case *opaque:
		switch x := v.(type) {
		case string:
			return c.path == "String" || c.path == "CharSequence" || c.path == "Object", true
		case integer:
			return c.path == "Integer" || c.path == "Number" || c.path == "Object", true
		case bool:
			return c.path == "Boolean" || c.path == "Object", true
		case *list:
			return c.path == "List" || c.path == "Collection" || c.path == "Iterable" || c.path == "Object", true
		case *object:
			if x.dict {
				return c.path == "Map" || c.path == "Object", true
			}
			if x.class != nil && jvErrors[x.class.name] != "" {
				takes, ok := caughtBy(c.path, &thrown{x}, jvErrors, '.')
				return takes, ok
			}
		}
	}
	return false, false
}

// jvEqual compares as equals does; ok is false where that is not known.
func jvEqual(a, b any) (same, ok bool) { return jvSame(a, b, &reach{}) }

func jvSame(a, b any, r *reach) (same, ok bool) {
	if !r.in() {
		return false, false
	}
	defer r.out()
	if !known(a) || !known(b) {
		return equals(a, b, true)
	}
	switch x := a.(type) {
	case nil:
		return b == nil, true
	case character:
		switch y := b.(type) {
		case character:
			return x == y, true
		case integer:
			return integer(x) == y, true
		}
		return false, true
	case integer:
		switch y := b.(type) {
		case integer:
			return x == y, true
		case character:
			return x == integer(y), true
		case float64:
			return float64(x) == y, true
		}
		return false, true
	case string, bool, float64:
		return a == b, true
	case *list:
		y, isList := b.(*list)
		if !isList || len(x.items) != len(y.items) {
			return false, true
		}
		if x == y {
			return true, true
		}
		for i := range x.items {
			if same, ok := jvSame(x.items[i], y.items[i], r); !ok || !same {
				return same, ok
			}
		}
		return true, true
	case *object:
		if x == b {
			return true, true
		}
		y, isObject := b.(*object)
		if isObject && x.class == y.class && jvRecord(x.class) && jvChoose(jvMethods(x.class, "equals", false), []any{b}) == nil {
			for _, k := range x.keys {
				c := y.cells[k]
				if c == nil {
					return false, false
				}
				if same, ok := jvSame(x.cells[k].v, c.v, r); !ok || !same {
					return same, ok
				}
			}
			return true, true
		}
		return false, !isObject || x.class != nil && x.class.enum || y.class != x.class
	}
	return a == b, true
}

func (m *machine) jvOperate(name string, a, b any, s *scope, at spot) (any, error) {
	switch name {
	case "==", "!=":
		x, isText := a.(string)
		y, both := b.(string)
		if isText && both && x == y && x != "" {
			return dontKnow("whether two texts are one"), nil
		}
		same, ok := jvEqual(a, b)
		if o, isObject := a.(*object); isObject && known(b) {
			p, _ := b.(*object)
			same, ok = o == p, true
		}
		if !ok {
			return dontKnow("whether two things are the same"), nil
		}
		return same == (name == "=="), nil
	case "+":
		_, textA := a.(string)
		_, textB := b.(string)
		if textA || textB {
			x, err := m.jvText(a, s, at)
			if err != nil {
				return nil, err
			}
			y, err := m.jvText(b, s, at)
			if err != nil {
				return nil, err
			}
			p, ok1 := x.(string)
			q, ok2 := y.(string)
			if !ok1 || !ok2 {
				return dontKnow("a text with what is not known"), nil
			}
			if len(p)+len(q) > maxText {
				return nil, spent("a text that is too long")
			}
			return p + q, nil
		}
	}
	for _, x := range []any{a, b} {
		if o, ok := x.(*opaque); ok {
			return dontKnow("what is made of " + o.String()), nil
		}
		if x == nil {
			return nil, raise("NullPointerException", "a number that is null")
		}
	}
	a, b = jvTyped("long", a), jvTyped("long", b)
	if x, ok := a.(integer); ok && (name == "<<" || name == ">>" || name == ">>>") {
		y, ok := b.(integer)
		if !ok || y < 0 || y > 31 || name == ">>>" && x < 0 || name == "<<" && (x != integer(int32(x)) || x<<y != integer(int32(x<<y))) {
			return dontKnow("a shift, which is another for int and for long"), nil
		}
		if name == "<<" {
			return x << y, nil
		}
		return x >> y, nil
	}
	if x, ok := a.(bool); ok {
		if y, ok := b.(bool); ok {
			switch name {
			case "&":
				return x && y, nil
			case "|":
				return x || y, nil
			case "^":
				return x != y, nil
			}
		}
	}
	if name == "/" || name == "%" {
		x, ok1 := a.(integer)
		y, ok2 := b.(integer)
		if ok1 && ok2 {
			if y == 0 {
				return nil, raise("ArithmeticException", "/ by zero")
			}
			if name == "/" {
				return x / y, nil
			}
			return x % y, nil
		}
		p, _ := toNumber(a)
		q, _ := toNumber(b)
		return arithmetic(name, p, q)
	}
	v, err := pyOperate(name, a, b)
	if _, ok := err.(*thrown); ok {
		return nil, giveUp("what %s gives", name)
	}
	return v, err
}

// jvShow writes a value as String.valueOf does.
func jvShow(v any) string {
	switch v := v.(type) {
	case nil:
		return "null"
	case character:
		return string(rune(v))
	case float64:
		s := strconv.FormatFloat(v, 'f', -1, 64)
		if !strings.ContainsAny(s, ".IN") {
			s += ".0"
		}
		return s
	case *object:
		if n, ok := v.get("\x00name"); ok {
			return show(n)
		}
		if msg, ok := v.get("message"); ok {
			return show(msg)
		}
	}
	return show(v)
}

// jvText is a value as a text: a string, or something that is not known.
func (m *machine) jvText(v any, s *scope, at spot) (any, error) {
	if err := m.deeper(); err != nil {
		return nil, err
	}
	defer m.higher()
	switch x := v.(type) {
	case *opaque, *function, *class:
		return dontKnow("a text with what is not known"), nil
	case *object:
		if x.class != nil && !x.class.builtin {
			if f := jvChoose(jvMethods(x.class, "toString", false), nil); f != nil && len(f.node.Kid(1).Kids) > 0 {
				return m.jvDispatch(f, x, nil, at)
			}
		}
		if _, ok := x.get("\x00name"); ok {
			return jvShow(x), nil
		}
		if jvRecord(x.class) {
			var parts []string
			for _, k := range x.keys {
				t, err := m.jvText(x.cells[k].v, s, at)
				if err != nil {
					return nil, err
				}
				text, ok := t.(string)
				if !ok {
					return t, nil
				}
				parts = append(parts, k+"="+text)
			}
			return x.class.name + "[" + strings.Join(parts, ", ") + "]", nil
		}
		if x.class != nil && x.class.builtin {
			v, done, err := m.jvMethod(x, "toString", nil, s, at)
			if t, ok := v.(string); ok && done && err == nil {
				return t, nil
			}
		}
		return dontKnow("an object as text"), nil
	case *list:
		parts := []string{}
		for _, y := range x.items {
			t, err := m.jvText(y, s, at)
			if err != nil {
				return nil, err
			}
			p, ok := t.(string)
			if !ok {
				return t, nil
			}
			parts = append(parts, p)
		}
		return "[" + strings.Join(parts, ", ") + "]", nil
	case *content:
		return x.text, nil
	}
	return jvShow(v), nil
}

// jvEnum are the functions that an enumeration has.
func (m *machine) jvEnum(c *class, name string, args []any) (any, bool, error) {
	if !c.enum {
		return nil, false, nil
	}
	if err := m.jvReady(c); err != nil {
		return nil, true, err
	}
	switch name {
	case "values":
		return &list{items: slices.Clone(c.tupled)}, true, nil
	case "valueOf":
		if len(args) != 1 {
			return nil, false, nil
		}
		t, ok := args[0].(string)
		if !ok {
			if args[0] == nil {
				return nil, true, raise("NullPointerException", "Name is null")
			}
			return dontKnow("a constant that is not known"), true, nil
		}
		for _, x := range c.tupled {
			if n, _ := x.(*object).get("\x00name"); n == any(t) {
				return x, true, nil
			}
		}
		return nil, true, raise("IllegalArgumentException", "No enum constant "+t)
	}
	return nil, false, nil
}

// jvObject are the methods that all objects have.
func (m *machine) jvObject(o *object, name string, args []any, s *scope, at spot) (any, bool, error) {
	if n, ok := o.get("\x00name"); ok {
		switch name {
		case "name", "toString":
			return n, true, nil
		case "ordinal":
			v, _ := o.get("\x00ordinal")
			return v, true, nil
		case "compareTo":
			x, _ := o.get("\x00ordinal")
			if p, ok := first(args).(*object); ok {
				y, _ := p.get("\x00ordinal")
				v, err := pyOperate("-", x, y)
				return v, true, err
			}
		}
	}
	switch name {
	case "equals":
		if len(args) == 1 {
			same, ok := jvEqual(o, args[0])
			if !ok {
				return dontKnow("whether two things are the same"), true, nil
			}
			return same, true, nil
		}
	case "toString":
		if len(args) == 0 {
			v, err := m.jvText(o, s, at)
			return v, true, err
		}
	case "getMessage", "getLocalizedMessage":
		if msg, ok := o.get("message"); ok {
			return msg, true, nil
		}
		if len(args) == 0 && outer2(o.class, "Exception") {
			return nil, true, nil
		}
	case "getClass":
		if len(args) == 0 {
			return &opaque{path: o.class.name + ".class"}, true, nil
		}
	case "hashCode":
		if len(args) == 0 {
			return dontKnow("the number of an object"), true, nil
		}
	case "printStackTrace", "notify", "notifyAll":
		return nil, true, nil
	case "start", "run": // of a thread
		if b := outer(o.class); b != nil && b.path == "Thread" {
			if f := jvChoose(jvMethods(o.class, "run", false), nil); f != nil {
				_, err := m.jvDispatch(f, o, nil, at)
				return nil, true, jvBeside(name, err)
			}
		}
	case "join", "setDaemon", "interrupt", "setName":
		if b := outer(o.class); b != nil && b.path == "Thread" {
			return nil, true, nil
		}
	}
	return nil, false, nil
}

// outer2 reports whether a class comes from errors.
func outer2(c *class, of string) bool {
	b := outer(c)
	return b != nil && strings.HasSuffix(b.path, of)
}

// jvBeside is what comes of a thread for the one that starts it: an error that nothing
// catches ends the thread alone (The Java Language Specification, SE 25, 11.3).
func jvBeside(how string, err error) error {
	switch x := err.(type) {
	case *exit:
		if x.stays {
			return nil
		}
	case *thrown:
		if how == "start" {
			return nil
		}
	}
	return err
}
