package trace

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
)

// What programs of Ruby do (documentation of Ruby 3.4, "Syntax" and "Core
// classes"; read 2026-11): all is an object, a method gives its last value, a
// block sees what surrounds it, and a name alone may be a call.

// symbol is a symbol of Ruby.
type symbol string

// symbolKey stands before the name of a key that is a symbol, numberKey before
// one that is a number.
const (
	symbolKey = "\x01"
	numberKey = "\x02"
)

// rbKey is a key of a hash as a text.
func rbKey(v any) string {
	switch v := v.(type) {
	case symbol:
		return symbolKey + string(v)
	case integer:
		return numberKey + show(v)
	}
	return keyText(v)
}

// rbUnkey is the key that a text stands for.
func rbUnkey(k string) any {
	if name, ok := strings.CutPrefix(k, symbolKey); ok {
		return symbol(name)
	}
	if n, ok := strings.CutPrefix(k, numberKey); ok {
		if i, ok := atoi(n); ok {
			return integer(i)
		}
	}
	return k
}

// rubyState is what a program of Ruby has beside its scopes.
type rubyState struct {
	consts  *object // constants at the top
	methods *object // methods that are defined at the top
	globals map[string]any
	main    *object
	sinatra *object // the settings of an application in the classic style
	apps    map[*class]*object
	classic *spot // where Sinatra is loaded so
	pending map[string]bool
	core    map[string]*class // classes of the language that the program has opened
}

// rbCore are the classes of the language that a program may open (Ruby 3.4, "Modules and
// Classes").
var rbCore = words("String Integer Float Numeric Symbol Array Hash NilClass TrueClass FalseClass Object Kernel Enumerable Comparable")

// rbCoreOf is such a class; it is made where the program opens it for the first time.
func (m *machine) rbCoreOf(name string, n *code.Node, s *scope) *class {
	if m.rb().core == nil {
		m.rb().core = map[string]*class{}
	}
	c := m.rb().core[name]
	if c == nil {
		c = &class{name: name, node: n, scope: s, statics: newObject(), methods: newObject()}
		m.rb().core[name] = c
	}
	return c
}

// rbCoreLine are the classes of the language that a value is of.
func rbCoreLine(v any) string {
	switch x := v.(type) {
	case string:
		return "String Comparable Object Kernel"
	case integer:
		return "Integer Numeric Comparable Object Kernel"
	case float64:
		return "Float Numeric Comparable Object Kernel"
	case symbol:
		return "Symbol Comparable Object Kernel"
	case *list:
		return "Array Enumerable Object Kernel"
	case nil:
		return "NilClass Object Kernel"
	case bool:
		if x {
			return "TrueClass Object Kernel"
		}
		return "FalseClass Object Kernel"
	case *object:
		if x.dict {
			return "Hash Enumerable Object Kernel"
		}
	case *opaque:
		return ""
	}
	return "Object Kernel"
}

func (m *machine) rb() *rubyState {
	if m.ruby == nil {
		m.ruby = &rubyState{consts: newObject(), methods: newObject(), globals: map[string]any{}, main: newObject(), apps: map[*class]*object{}, pending: map[string]bool{}}
	}
	return m.ruby
}

// holder is the scope that says what self is: of a method, a class body, a file,
// or of a block that is run for another object.
func (s *scope) holder() *scope {
	x := s
	for !x.own && !x.moved && x.up != nil {
		x = x.up
	}
	return x
}

// frame is the scope of the method, the class or the file around.
func (s *scope) frame() *scope {
	x := s
	for !x.own && x.up != nil {
		x = x.up
	}
	return x
}

// rbLocal finds a variable: a method does not see those around it.
func rbLocal(s *scope, name string) *cell {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c
		}
		if x.own {
			return nil
		}
	}
	return nil
}

// rbSet gives a variable or a constant its value.
func (m *machine) rbSet(name string, v any, s *scope) {
	switch {
	case name[0] == '$':
		m.rb().globals[name] = v
	case name[0] >= 'A' && name[0] <= 'Z':
		if c, ok := v.(*class); ok && c.name == "" {
			c.name = name
		}
		if c, ok := s.frame().this.(*class); ok {
			c.statics.set(name, v)
			return
		}
		m.rb().consts.set(name, v)
	default:
		if c := rbLocal(s, name); c != nil {
			c.v = v
			return
		}
		s.declare(name, v)
	}
}

// rbStatement runs a statement and gives its value.
func (m *machine) rbStatement(n *code.Node, s *scope) (any, error) {
	if n == nil {
		return nil, nil
	}
	if err := m.step(); err != nil {
		return nil, err
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch n.Kind {
	case code.ExprStmt:
		return m.eval(n.Kid(0), s)
	case code.Block:
		return m.rbBody(n.Kids, s)
	case code.Bind:
		if n.Kid(0).Is(code.Array) { // a, b = …
			v, err := m.eval(n.Kid(1), s)
			if err != nil {
				return nil, err
			}
			return v, m.rbSpread(n.Kids[0], v, s)
		}
		v, err := m.eval(n.Kid(1), s)
		if err != nil || n.Kid(0) == nil {
			return nil, err
		}
		return v, m.assign(n.Kids[0], v, s, "")
	case code.If:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		yes, err := m.decide(v, s, n.Kid(0))
		if err != nil {
			return dontKnow(err.Error()), m.either(err, n.Kid(1), n.Kid(2), s)
		}
		if yes {
			return m.rbStatement(n.Kid(1), s)
		}
		return m.rbStatement(n.Kid(2), s)
	case code.Try:
		return m.rbTry(n, s)
	case code.Return:
		v, err := m.eval(n.Kid(0), s)
		if n.Kid(0) == nil {
			v = nil
		}
		if err != nil {
			return nil, err
		}
		f := s
		for !f.own && !f.lambda && f.up != nil {
			f = f.up
		}
		return nil, &leave{kind: "return", v: v, owner: f}
	case code.Jump:
		if n.Name != "break" && n.Name != "continue" && n.Name != "retry" {
			return nil, giveUp("%s", n.Name)
		}
		v := any(nil)
		if n.Kid(0) != nil {
			var err error
			if v, err = m.eval(n.Kids[0], s); err != nil {
				return nil, err
			}
		}
		return nil, &leave{kind: n.Name, v: v}
	case code.Throw:
		return nil, m.rbRaise(n, s)
	case code.Func:
		return m.rbDefine(n, s)
	case code.Class:
		return nil, m.rbClass(n, s)
	case code.Loop:
		_, err := m.loop(n, s)
		return nil, err
	}
	return m.eval(n, s)
}

func (m *machine) rbBody(kids []*code.Node, s *scope) (v any, err error) {
	for _, k := range kids {
		if v, err = m.rbStatement(k, s); err != nil {
			return nil, err
		}
	}
	return v, nil
}

// rbSpread gives the parts of a list to several targets.
func (m *machine) rbSpread(to *code.Node, v any, s *scope) error {
	if !known(v) {
		for _, k := range to.Kids {
			if k.Is(code.Name) {
				m.rbSet(k.Name, dontKnow("a part of "+v.(*opaque).String()), s)
			}
		}
		return nil
	}
	items := []any{v}
	if l, ok := v.(*list); ok {
		items = l.items
	} else if v == nil {
		items = nil
	}
	star := slices.IndexFunc(to.Kids, func(k *code.Node) bool { return k.Is(code.Spread) })
	for i, k := range to.Kids {
		x := any(nil)
		switch {
		case i == star:
			end := max(i, len(items)-(len(to.Kids)-1-i))
			x = &list{items: slices.Clone(items[min(i, len(items)):min(end, len(items))])}
			k = k.Kid(0)
		case star >= 0 && i > star:
			if at := len(items) - (len(to.Kids) - i); at >= 0 {
				x = items[at]
			}
		case i < len(items):
			x = items[i]
		}
		if k.Is(code.Array) {
			if err := m.rbSpread(k, x, s); err != nil {
				return err
			}
			continue
		}
		if err := m.assign(k, x, s, ""); err != nil {
			return err
		}
	}
	return nil
}

// rbErrors are the classes that errors of Ruby come from (Ruby 3.4,
// "Exception").
var rbErrors = map[string]string{
	"StandardError": "Exception", "ArgumentError": "StandardError", "KeyError": "IndexError", "IndexError": "StandardError", "StopIteration": "IndexError", "TypeError": "StandardError", "NameError": "StandardError",
	"NoMethodError": "NameError", "RuntimeError": "StandardError", "FrozenError": "RuntimeError", "ZeroDivisionError": "StandardError", "RangeError": "StandardError", "FloatDomainError": "RangeError", "IOError": "StandardError",
	"SystemCallError": "StandardError", "Errno.ENOENT": "SystemCallError", "Errno.EADDRINUSE": "SystemCallError", "Errno.EACCES": "SystemCallError", "RegexpError": "StandardError", "LoadError": "ScriptError", "NotImplementedError": "ScriptError",
	"ScriptError": "Exception", "SystemExit": "Exception", "Interrupt": "SignalException", "SignalException": "Exception", "JSON.ParserError": "StandardError", "Psych.SyntaxError": "StandardError", "SocketError": "StandardError",
}

func (m *machine) rbRaise(n *code.Node, s *scope) error {
	if n.Kid(0) == nil {
		if c := rbLocal(s, "\x00caught"); c != nil {
			return &thrown{c.v}
		}
		return raise("RuntimeError", "unhandled exception")
	}
	v, err := m.eval(n.Kids[0], s)
	if err != nil {
		return err
	}
	return m.rbThrown(v, n, s)
}

func (m *machine) rbThrown(v any, n *code.Node, s *scope) error {
	switch x := v.(type) {
	case string:
		return raise("RuntimeError", x)
	case *class:
		o, err := m.rbNew(x, nil, nil, nil, spot{s.module.file, n})
		if err != nil {
			return err
		}
		return &thrown{o}
	case *opaque:
		name := strings.TrimSuffix(strings.TrimSuffix(x.path, "()"), ".new")
		if x.path == "" {
			name = "StandardError"
		}
		msg := name
		if len(x.args) > 0 {
			msg = rbShow(x.args[0])
		}
		return &thrown{madeError(name, msg)}
	}
	return &thrown{v}
}

// rbCatches reports whether a rescue takes an error; ok is false where that is
// not known.
func (m *machine) rbCatches(what string, t *thrown, s *scope) (takes, ok bool) {
	o, isObject := t.v.(*object)
	if !isObject || o.class == nil {
		return false, false
	}
	var line []string
	for _, c := range o.class.line() {
		line = append(line, c.name)
		for _, b := range c.bases {
			if b, ok := b.(*opaque); ok {
				line = append(line, b.path)
			}
		}
	}
	for _, name := range line {
		for range 8 {
			if name = rbErrors[name]; name == "" {
				break
			}
			line = append(line, name)
		}
	}
	if what == "" {
		what = "StandardError"
	}
	all := true
	for _, name := range strings.Split(what, ",") {
		if slices.ContainsFunc(line, func(l string) bool {
			return l == name || l[strings.LastIndexByte(l, '.')+1:] == name[strings.LastIndexByte(name, '.')+1:]
		}) {
			return true, true
		}
		if name != "" && rbErrors[name] == "" && name[0] >= 'a' {
			all = false
		}
	}
	// An error of a class that is not known may be of any.
	last := line[len(line)-1]
	return false, all && (last == "Exception" || o.class.node != nil || rbErrors[last] != "")
}

func (m *machine) rbTry(n *code.Node, s *scope) (any, error) {
	m.trying++
	v, err := m.rbStatement(n.Kid(0), s)
	m.trying--
	t, failed := err.(*thrown)
	var finally *code.Node
	handled := false
	for _, k := range n.Kids[min(1, len(n.Kids)):] {
		switch {
		case k.Name == "finally":
			finally = k
		case k.Name == "else" && err == nil && !handled:
			v, err = m.rbStatement(k, s)
		case k.Name == "catch" && failed && !handled:
			what, name, _ := strings.Cut(k.Alias, ":")
			takes, ok := m.rbCatches(what, t, s)
			if !ok {
				return nil, undecided("whether %s is caught", t.String())
			}
			if !takes {
				continue
			}
			handled = true
			s.declare("\x00caught", t.v)
			m.rb().globals["$!"] = t.v
			if name != "" {
				m.rbSet(name, t.v, s)
			}
			v, err = m.rbStatement(k, s)
			if l, ok := err.(*leave); ok && l.kind == "retry" {
				if err := m.step(); err != nil {
					return nil, err
				}
				return m.rbTry(n, s)
			}
		}
	}
	if finally != nil {
		if _, e := m.rbStatement(finally, s); e != nil {
			return nil, e
		}
	}
	return v, err
}

// rbDefine defines a method: of the class around, or of all where it stands at
// the top.
func (m *machine) rbDefine(n *code.Node, s *scope) (any, error) {
	f := &function{name: n.Name, node: n, scope: s}
	x := s.frame()
	c, inClass := x.this.(*class)
	if n.Alias != "" { // of one object
		of, err := m.rbName(&code.Node{Kind: code.Name, Name: n.Alias, Off: n.Off, End: n.Off}, s)
		if err != nil {
			return nil, err
		}
		switch o := of.(type) {
		case *object:
			o.set("\x00own "+n.Name, f)
		case *class:
			f.home = o
			o.statics.set(n.Name, f)
		default:
			return nil, undecided("a method of what is not known")
		}
		return symbol(n.Name), nil
	}
	switch {
	case inClass && x.fn == nil && (n.Flag&code.Static != 0 || len(c.extended) > 0 && c.extended[0] == c):
		f.home = c
		c.statics.set(n.Name, f)
	case inClass && x.fn == nil:
		f.home = c
		c.methods.set(n.Name, f)
		if c.selfish {
			c.statics.set(n.Name, f)
		}
	case x.fn != nil && x.fn.home != nil:
		f.home = x.fn.home
		x.fn.home.methods.set(n.Name, f)
	default:
		m.rb().methods.set(n.Name, f)
	}
	return symbol(n.Name), nil
}

// rbClass runs the body of a class or a module, which may have been opened
// before.
func (m *machine) rbClass(n *code.Node, s *scope) error {
	var c *class
	around, nested := s.frame().this.(*class)
	if rbCore[n.Name] && !nested && len(n.Kid(0).Kids) == 0 && n.Alias != code.Structure && m.rb().consts.cells[n.Name] == nil {
		return m.rbInside(m.rbCoreOf(n.Name, n, s), n.Kid(1), s)
	}
	holder := m.rb().consts
	if nested {
		holder = around.statics
	}
	if old, ok := holder.get(n.Name); ok {
		c, _ = old.(*class)
	}
	if c == nil {
		if old, ok := m.rb().consts.get(n.Name); ok && !nested {
			c, _ = old.(*class)
		}
	}
	if c == nil {
		c = &class{name: n.Name, node: n, scope: s, statics: newObject(), methods: newObject()}
	}
	for _, b := range n.Kid(0).Kids {
		v, err := m.eval(b, s)
		if err != nil {
			return err
		}
		if len(c.bases) == 0 {
			c.bases = append(c.bases, v)
		}
		if base, ok := v.(*class); ok {
			c.tupled = append(c.tupled, base.tupled...)
			c.data = c.data || base.data
		}
	}
	_, opened := holder.get(n.Name)
	holder.set(n.Name, c)
	if len(c.bases) > 0 && !opened {
		if base, ok := c.bases[0].(*class); ok {
			if f, _ := m.rbFind(base, "inherited"); f != nil && f.home != nil {
				if _, err := m.rbInvoke(f, base, []any{c}, nil, nil, spot{s.module.file, n}); err != nil {
					return err
				}
			}
		}
	}
	body := n.Kid(1)
	if n.Alias == code.Structure {
		own := *body
		own.Kids = body.Kids[1:]
		for _, p := range paramsOf(body.Kids[0].Kid(0)) {
			c.tupled = append(c.tupled, p.Name)
		}
		body = &own
	}
	return m.rbInside(c, body, s)
}

// rbInside runs a piece of code as the body of a class.
func (m *machine) rbInside(c *class, body *code.Node, s *scope) error {
	in := &scope{vars: map[string]*cell{}, up: s, module: s.module, static: s.module.file.Inside[c.node], this: c, own: true}
	if in.static == nil {
		in.static = s.static
	}
	_, err := m.rbBody(body.Kids, in)
	return err
}

// rbConst finds a constant: in the classes around, in those that they come
// from, at the top.
func (m *machine) rbConst(name string, s *scope) (any, bool) {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c.v, true
		}
		if c, ok := x.this.(*class); ok && x.own && x.fn == nil {
			if v, ok := c.statics.get(name); ok {
				return v, true
			}
			if c.name == name {
				return c, true
			}
		}
	}
	if c := rbHome(s); c != nil {
		if v, ok := classKey(c, name, true); ok {
			return v, true
		}
	}
	return m.rb().consts.get(name)
}

// rbHome is the class whose method runs.
func rbHome(s *scope) *class {
	x := s.holder()
	if !x.moved && x.fn != nil && x.fn.home != nil {
		return x.fn.home
	}
	switch t := x.this.(type) {
	case *class:
		return t
	case *object:
		return t.class
	}
	return nil
}

// rbNode evaluates what Ruby has of its own; done is false for what all
// languages have.
func (m *machine) rbNode(n *code.Node, s *scope) (v any, done bool, err error) {
	switch n.Kind {
	case code.String:
		if n.Flag&code.Symbol != 0 {
			return symbol(n.Name), true, nil
		}
		return n.Name, true, nil
	case code.Template:
		var b strings.Builder
		for _, k := range n.Kids {
			v, err := m.eval(k, s)
			if err != nil {
				return nil, true, err
			}
			if o, ok := v.(*opaque); ok {
				return dontKnow("a text with " + o.String()), true, nil
			}
			text, err := m.rbText(v, spot{s.module.file, n})
			if err != nil {
				return nil, true, err
			}
			b.WriteString(text)
			if b.Len() > maxText {
				return nil, true, spent("a text that is too long")
			}
		}
		return b.String(), true, nil
	case code.Name:
		v, err := m.rbName(n, s)
		return v, true, err
	case code.Member:
		v, err := m.rbMember(n, s)
		return v, true, err
	case code.Index:
		base, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, true, err
		}
		k, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, true, err
		}
		with := []any{k}
		for _, x := range n.Kids[2:] {
			k, err := m.eval(x, s)
			if err != nil {
				return nil, true, err
			}
			with = append(with, k)
		}
		v, err := m.rbSend(base, "[]", with, nil, nil, s, spot{s.module.file, n})
		return v, true, err
	case code.Call:
		v, err := m.rbCall(n, s)
		return v, true, err
	case code.Func:
		return m.rbBlock(n, s, n.Name == "" && lambdaLike(n, s)), true, nil
	case code.Object:
		o := newObject()
		o.dict = true
		for _, p := range n.Kids {
			if p.Is(code.Spread) {
				v, err := m.eval(p.Kid(0), s)
				if err != nil {
					return nil, true, err
				}
				if err := rbMerge(m, o, v); err != nil {
					return nil, true, err
				}
				continue
			}
			if !p.Is(code.Pair) {
				return nil, true, giveUp("an element that is not followed")
			}
			k := p.Name
			if p.Flag&code.Symbol != 0 {
				k = symbolKey + k
			}
			if p.Kid(1) != nil {
				x, err := m.eval(p.Kid(1), s)
				if err != nil {
					return nil, true, err
				}
				if unclear([]any{x}, 3) != nil {
					return nil, true, undecided("a key that is not known")
				}
				k = rbKey(x)
			}
			v, err := m.eval(p.Kid(0), s)
			if err != nil {
				return nil, true, err
			}
			o.set(k, v)
		}
		return o, true, nil
	case code.Array:
		if n.Name == code.LastOf {
			if n.Alias == code.Whole {
				v, err := m.rbStatement(n.Kid(0), s)
				return v, true, err
			}
			v, err := m.rbBody(n.Kids, s)
			return v, true, err
		}
		l := &list{}
		for _, k := range n.Kids {
			if k.Is(code.Spread) {
				v, err := m.eval(k.Kid(0), s)
				if err != nil {
					return nil, true, err
				}
				items, err := m.rbItems(v)
				if err != nil {
					return nil, true, err
				}
				l.items = append(l.items, items...)
				continue
			}
			v, err := m.eval(k, s)
			if err != nil {
				return nil, true, err
			}
			l.items = append(l.items, v)
		}
		return l, true, nil
	case code.Unary:
		if n.Name == "!" {
			v, err := m.eval(n.Kid(0), s)
			if err != nil {
				return nil, true, err
			}
			yes, err := m.decide(v, s, n.Kid(0))
			if err != nil {
				v, err := m.oneOf(err, s)
				return v, true, err
			}
			return !yes, true, nil
		}
	case code.Binary:
		v, err := m.rbBinary(n, s)
		return v, true, err
	case code.Assign:
		v, err := m.rbAssign(n, s)
		return v, true, err
	case code.Cond:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, true, err
		}
		yes, err := m.decide(v, s, n.Kid(0))
		if err != nil {
			v, err := m.oneOf(err, s, n.Kids[1:]...)
			return v, true, err
		}
		k := n.Kid(1)
		if !yes {
			k = n.Kid(2)
		}
		if k == nil {
			return nil, true, nil
		}
		v, err = m.eval(k, s)
		return v, true, err
	case code.Return, code.Jump, code.Throw, code.If, code.Try, code.Block, code.Bind, code.ExprStmt, code.Class, code.Loop:
		v, err := m.rbStatement(n, s)
		return v, true, err
	case code.Undefined:
		return nil, true, nil
	}
	return nil, false, nil
}

// lambdaLike reports whether a function was written as a lambda.
func lambdaLike(n *code.Node, s *scope) bool {
	src := s.module.file.Src
	return int(n.Off) < len(src) && src[n.Off] == '-'
}

// rbBlock is a block or a lambda as a value.
func (m *machine) rbBlock(n *code.Node, s *scope, lambda bool) *function {
	f := &function{node: n, scope: s, this: s.this, bound: true, static: lambda}
	if s.fn != nil {
		f.home = s.fn.home
	}
	return f
}

func (m *machine) rbName(n *code.Node, s *scope) (any, error) {
	name := n.Name
	at := spot{s.module.file, n}
	switch name {
	case "self":
		return s.holder().self(m), nil
	case "ENV":
		return &envMap{}, nil
	case "ARGV":
		if m.argvList == nil {
			m.argvList = &list{items: m.argv()[1:]}
		}
		return m.argvList, nil
	case "__FILE__":
		return root + "/" + s.module.file.Name, nil
	case "$0", "$PROGRAM_NAME":
		return root + "/" + m.main.Name, nil
	case "__dir__":
		return path.Dir(root + "/" + s.module.file.Name), nil
	case "__method__":
		if x := s.frame(); x.fn != nil {
			return symbol(x.fn.name), nil
		}
		return nil, nil
	case "$stdout", "$stderr", "$stdin", "STDOUT", "STDERR", "STDIN", "$LOAD_PATH", "$;", "$,", "$/":
		return &opaque{path: name}, nil
	}
	if name[0] == '$' {
		if v, ok := m.rb().globals[name]; ok {
			return v, nil
		}
		if name == "$~" || len(name) == 2 && name[1] >= '1' && name[1] <= '9' {
			return m.rb().globals[name], nil
		}
		return nil, nil
	}
	if c := rbLocal(s, name); c != nil {
		return m.read(c)
	}
	if name[0] >= 'A' && name[0] <= 'Z' {
		if v, ok := m.rbConst(name, s); ok {
			return v, nil
		}
		return m.package1(name), nil
	}
	return m.rbSend(s.holder().self(m), name, nil, nil, nil, s, at)
}

// self is what a method, a class body or a file belongs to.
func (s *scope) self(m *machine) any {
	if s.this == nil || s.this == any(undefined) {
		return m.rb().main
	}
	return s.this
}

// ofSelf reports whether a member was written as @name.
func ofSelf(n *code.Node) bool {
	k := n.Kid(0)
	return k.Is(code.Name) && k.Name == "self" && k.Off == k.End
}

// rbVariables are the variables of an object or a class: the place of @name and
// @@name.
func (m *machine) rbVariable(n *code.Node, s *scope) (*object, string) {
	src := s.module.file.Src
	self := s.holder().self(m)
	if int(n.Off)+1 < len(src) && src[n.Off] == '@' && src[n.Off+1] == '@' {
		if c := rbHome(s); c != nil {
			for _, x := range c.line() {
				if _, ok := x.statics.get("@@" + n.Name); ok {
					return x.statics, "@@" + n.Name
				}
			}
			return c.statics, "@@" + n.Name
		}
		return m.rb().consts, "@@" + n.Name
	}
	switch self := self.(type) {
	case *object:
		return self, "@" + n.Name
	case *class:
		return self.statics, "@" + n.Name
	}
	return m.rb().main, "@" + n.Name
}

func (m *machine) rbMember(n *code.Node, s *scope) (any, error) {
	if ofSelf(n) {
		o, name := m.rbVariable(n, s)
		v, _ := o.get(name)
		if v == any(undefined) {
			return nil, nil
		}
		return v, nil
	}
	base, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	if n.Flag&code.OptionalOp != 0 && base == nil {
		return nil, nil
	}
	if n.Name != "" && n.Name[0] >= 'A' && n.Name[0] <= 'Z' { // a constant
		switch b := base.(type) {
		case *class:
			if v, ok := classKey(b, n.Name, true); ok {
				return v, nil
			}
			if v, ok := m.rb().consts.get(n.Name); ok {
				return v, nil
			}
		case *opaque:
			if b.path != "" {
				if v, ok := m.rb().consts.get(n.Name); ok && rbErrors[b.path+"."+n.Name] == "" {
					if c, isClass := v.(*class); isClass {
						return c, nil
					}
				}
				return m.package1(b.path + "." + n.Name), nil
			}
		}
	}
	return m.rbSend(base, n.Name, nil, nil, nil, s, spot{s.module.file, n})
}

// rbArguments evaluates what a call is given: by place, by name, a block.
func (m *machine) rbArguments(n *code.Node, s *scope) (args []any, kw *object, block any, err error) {
	nodes := n.Args()
	for i, a := range nodes {
		switch {
		case a.Is(code.Keyword):
			if kw == nil {
				kw = newObject()
				kw.dict = true
			}
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, nil, err
			}
			k := a.Name
			if a.Flag&code.Symbol != 0 {
				k = symbolKey + k
			}
			kw.set(k, v)
		case a.Is(code.Spread):
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, nil, err
			}
			if a.Name == "**" {
				if kw == nil {
					kw = newObject()
					kw.dict = true
				}
				if err := rbMerge(m, kw, v); err != nil {
					return nil, nil, nil, err
				}
				continue
			}
			items, err := m.rbItems(v)
			if err != nil {
				return nil, nil, nil, err
			}
			args = append(args, items...)
		case a.Flag&code.Address != 0 && i == len(nodes)-1: // &block, &:name
			v, err := m.eval(a, s)
			if err != nil {
				return nil, nil, nil, err
			}
			block = m.rbProc(v)
		case a.Is(code.Func) && a.Name == "" && i == len(nodes)-1 && !lambdaLike(a, s):
			block = m.rbBlock(a, s, false)
		case a.Is(code.Func) && a.Name != "": // private def …
			v, err := m.rbDefine(a, s)
			if err != nil {
				return nil, nil, nil, err
			}
			args = append(args, v)
		default:
			v, err := m.eval(a, s)
			if err != nil {
				return nil, nil, nil, err
			}
			args = append(args, v)
		}
	}
	return args, kw, block, nil
}

// rbProc is a block that is made of a value: of a name, the call of that method.
func (m *machine) rbProc(v any) any {
	var name string
	switch v := v.(type) {
	case symbol:
		name = string(v)
	case string:
		name = v
	default:
		return v
	}
	return &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
		if len(args) == 0 {
			return nil, giveUp("a block that is given nothing")
		}
		return m.rbSend(args[0], name, args[1:], nil, nil, m.topOf(at), at)
	}}
}

// rbMerge adds what a hash holds to another.
func rbMerge(m *machine, o *object, v any) error {
	switch v := v.(type) {
	case nil:
	case *object:
		for _, k := range v.keys {
			if v.dict {
				o.set(k, v.cells[k].v)
			}
		}
	case *envMap:
		for _, k := range m.envKeys() {
			o.set(k, m.env.text(k))
		}
	default:
		return giveUp("what a hash is given")
	}
	return nil
}

func (m *machine) rbCall(n *code.Node, s *scope) (any, error) {
	callee := n.Kid(0)
	at := spot{s.module.file, n}
	if callee.Is(code.Name) && callee.Name == code.Yield {
		x := s.frame()
		args, kw, _, err := m.rbArguments(n, s)
		if err != nil {
			return nil, err
		}
		if kw != nil {
			args = append(args, kw)
		}
		if x.block == nil {
			return nil, raise("LocalJumpError", "no block given")
		}
		return m.rbYield(x.block, args, at)
	}
	var self any
	name := callee.Name
	switch {
	case callee.Is(code.Member):
		if ofSelf(callee) { // what @name holds is called with a block or an argument
			v, err := m.rbMember(callee, s)
			if err != nil {
				return nil, err
			}
			self, name = v, "call"
			break
		}
		base, err := m.eval(callee.Kid(0), s)
		if err != nil {
			return nil, err
		}
		if callee.Flag&code.OptionalOp != 0 && base == nil {
			return nil, nil
		}
		if name[0] >= 'A' && name[0] <= 'Z' {
			if v, err := m.rbMember(callee, s); err == nil {
				if _, isClass := v.(*class); isClass {
					return v, nil
				}
			}
		}
		self = base
	case callee.Is(code.Name):
		self = s.holder().self(m)
		if c := rbLocal(s, name); c != nil && !m.rbHas(self, name) { // f.(x)
			self, name = c.v, "call"
		}
	default:
		v, err := m.eval(callee, s)
		if err != nil {
			return nil, err
		}
		self, name = v, "call"
	}
	args, kw, block, err := m.rbArguments(n, s)
	if err != nil {
		return nil, err
	}
	v, err := m.rbSend(self, name, args, kw, block, s, at)
	if l, ok := err.(*leave); ok && l.kind == "stop" && l.owner == block && block != nil { // the block broke off
		return l.v, nil
	}
	return v, err
}

// rbHas reports whether something of the tree is a method of an object.
func (m *machine) rbHas(self any, name string) bool {
	f, _ := m.rbFind(self, name)
	return f != nil
}

// rbFind finds a method of the tree.
func (m *machine) rbFind(self any, name string) (*function, *class) {
	var c *class
	switch x := self.(type) {
	case *object:
		if x.class != nil && !x.dict {
			if v, ok := x.get("\x00own " + name); ok {
				return v.(*function), nil
			}
			if f, home := rbMethod(x.class, name); f != nil {
				return f, home
			}
		}
	case *class:
		for _, c = range x.line() {
			if v, ok := c.statics.get(name); ok {
				if f, ok := v.(*function); ok {
					return f, c
				}
			}
			for _, e := range c.extended {
				if f, home := rbMethod(e, name); f != nil {
					return f, home
				}
			}
			if c.selfish {
				if f, home := rbMethod(c, name); f != nil {
					return f, home
				}
			}
		}
	}
	if len(m.rb().core) > 0 {
		for of := range strings.FieldsSeq(rbCoreLine(self)) {
			if c := m.rb().core[of]; c != nil {
				if f, home := rbMethod(c, name); f != nil {
					return f, home
				}
			}
		}
	}
	if v, ok := m.rb().methods.get(name); ok {
		if _, isOpaque := self.(*opaque); !isOpaque {
			return v.(*function), nil
		}
	}
	return nil, nil
}

// rbMethod finds a method of a class: its own, of what it includes, of what it
// comes from.
func rbMethod(c *class, name string) (*function, *class) {
	for _, x := range c.line() {
		if v, ok := x.methods.get(name); ok {
			if f, ok := v.(*function); ok {
				return f, x
			}
		}
	}
	return nil, nil
}

// rbSend calls a method.
func (m *machine) rbSend(self any, name string, args []any, kw *object, block any, s *scope, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if f, home := m.rbFind(self, name); f != nil {
		w := *f
		if w.home == nil {
			w.home = home
		}
		return m.rbInvoke(&w, self, args, kw, block, at)
	}
	if o, ok := self.(*object); ok && len(args) == 0 && kw == nil && block == nil && o.class != nil && !o.class.builtin && !o.dict { // p, format: one that it has counts
		if v, ok := o.get("@" + name); ok && m.rbReadable(o, name) {
			return v, nil
		}
	}
	if v, done, err := m.rbBuiltin(self, name, args, kw, block, s, at); done || err != nil {
		return v, err
	}
	switch o := self.(type) {
	case *object:
		if o.class == nil && o == m.rb().main || o.class != nil && !o.dict {
			if len(args) == 0 && kw == nil {
				if v, ok := o.get("@" + name); ok && m.rbReadable(o, name) {
					return v, nil
				}
			}
			if plain, ok := strings.CutSuffix(name, "="); ok && len(args) == 1 && plain != "" {
				o.set("@"+plain, args[0])
				return args[0], nil
			}
			if f, _ := m.rbFind(self, "method_missing"); f != nil {
				return m.rbInvoke(f, self, append([]any{symbol(name)}, args...), kw, block, at)
			}
			if f, _ := m.rbFind(self, "each"); f != nil && o.class != nil && name != "each" { // as all that can be gone through
				l := &list{}
				take := &function{native: func(_ *machine, _ any, a []any, _ map[string]any, _ spot) (any, error) {
					if l.items = append(l.items, first(a)); len(l.items) > maxItems {
						return nil, spent("a list that is too long")
					}
					return nil, nil
				}}
				if _, err := m.rbInvoke(f, self, nil, nil, take, at); err != nil {
					return nil, err
				}
				if v, done, err := m.rbList(l, name, args, kw, block, s, at); done || err != nil {
					return v, err
				}
			}
			if o.class != nil {
				if base := outer(o.class); base != nil {
					return m.rbOutside(&opaque{path: base.path + ".new()." + name, self: o}, args, kw, block, at)
				}
			}
		}
		if o == m.rb().main {
			return m.rbOutside(m.package1(name), args, kw, block, at)
		}
		return nil, giveUp("the method %s of what is not followed", name)
	case *class:
		if len(args) == 0 && kw == nil {
			if v, ok := o.statics.get("@" + name); ok && o.readable[name] {
				return v, nil
			}
		}
		if plain, ok := strings.CutSuffix(name, "="); ok && len(args) == 1 {
			o.statics.set("@"+plain, args[0])
			return args[0], nil
		}
		if base := outer(o); base != nil {
			return m.rbOutside(&opaque{path: base.path + "." + name, recv: base}, args, kw, block, at)
		}
		if f, _ := m.rbFind(self, "method_missing"); f != nil {
			return m.rbInvoke(f, self, append([]any{symbol(name)}, args...), kw, block, at)
		}
		return m.rbOutside(m.package1(name), args, kw, block, at)
	case *opaque:
		if o.path == "" {
			m.rbHanded(args, kw, block, name, at)
			return dontKnow("what " + firstOf(o.why, name) + " gives"), nil
		}
		return m.rbOutside(&opaque{path: o.path + "." + name, recv: o}, args, kw, block, at)
	case nil:
		if len(m.rb().core) > 0 && rbFunctions[name] {
			break
		}
		return nil, raise("NoMethodError", "undefined method "+name+" for nil")
	}
	if len(m.rb().core) > 0 && rbFunctions[name] { // in a method that the program gives a class of the language
		if v, done, err := m.rbKernel(self, name, args, kw, block, s, at); done || err != nil {
			return v, err
		}
	}
	return nil, giveUp("the method %s", name)
}

// rbFunctions are functions of Kernel that the methods of any object may call (Ruby 3.4,
// Kernel).
var rbFunctions = words("Integer Float String Array Hash format sprintf puts print p raise fail loop rand lambda proc require require_relative abort exit warn catch throw")

// rbReadable reports whether a variable of an object can be read from outside.
func (m *machine) rbReadable(o *object, name string) bool {
	if o.class == nil {
		return false
	}
	for _, c := range o.class.line() {
		if c.readable[name] || len(c.tupled) > 0 || c.data {
			return true
		}
		if c.node != nil && c.node.Kid(0) != nil && c.node.Kids[0].Off == c.node.Kids[0].End && len(c.node.Kids[0].Kids) == 0 && c.node.Off == c.node.Kids[0].Off { // of a structure
			return true
		}
	}
	return false
}

// rbOutside calls something of a library.
func (m *machine) rbOutside(o *opaque, args []any, kw *object, block any, at spot) (any, error) {
	keys := map[string]any{}
	if kw != nil {
		for _, k := range kw.keys {
			keys[strings.TrimPrefix(k, symbolKey)] = kw.cells[k].v
		}
	}
	for _, a := range args {
		if d, ok := a.(*object); ok && d.dict {
			for _, k := range d.keys {
				if name := strings.TrimPrefix(k, symbolKey); keys[name] == nil {
					keys[name] = d.cells[k].v
				}
			}
		}
	}
	if m.note(o, args, keys, at) {
		return nil, &exit{stays: true}
	}
	name := o.path[strings.LastIndexByte(o.path, '.')+1:]
	m.rbHanded(args, kw, block, name, at)
	if len(o.path) > 400 {
		return dontKnow("a chain of calls"), nil
	}
	return &opaque{path: o.path + "()", recv: o, args: args, keys: keys, fresh: name == "new"}, nil
}

// rbHanded notes blocks that are given away.
func (m *machine) rbHanded(args []any, kw *object, block any, name string, at spot) {
	fn, ok := block.(*function)
	for _, a := range args {
		m.waiting = m.waiting || holdsCode(a, 0)
	}
	if kw != nil {
		m.waiting = m.waiting || holdsCode(kw, 0)
	}
	if !ok {
		return
	}
	m.waiting = true
	m.turned(fn, name)
	if !passed[name] && fn.node != nil {
		m.kept = append(m.kept, job{fn, nil, at})
	}
}

// rbYield calls a block: a list that is all it is given is taken apart for
// several names.
func (m *machine) rbYield(block any, args []any, at spot) (any, error) {
	f, ok := block.(*function)
	if !ok {
		if o, isOpaque := block.(*opaque); isOpaque {
			return dontKnow("what " + o.String() + " gives"), nil
		}
		return nil, undecided("a block that is not known")
	}
	if f.native != nil {
		return f.native(m, nil, args, nil, at)
	}
	v, err := m.rbRun(f, f.this, args, nil, nil, at)
	if l, ok := err.(*leave); ok {
		switch l.kind {
		case "continue":
			return l.v, nil
		case "break":
			return nil, &leave{kind: "stop", v: l.v, owner: block}
		}
	}
	return v, err
}

// rbRun runs the code of a block or a lambda.
func (m *machine) rbRun(f *function, this any, args []any, kw *object, block any, at spot) (any, error) {
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	s := f.scope.inner()
	if st := f.scope.module.file.Funcs[f.node]; st != nil {
		s.static = st
	}
	s.lambda = f.static
	if this != f.this || f.moved { // instance_eval
		s.moved, s.this = true, this
	}
	params := paramsOf(f.node.Kid(0))
	if len(args) == 1 && !f.static && (len(params) > 1 || len(params) == 1 && params[0].Kid(1) != nil) {
		if l, ok := args[0].(*list); ok && params[0].Kid(1) == nil {
			args = l.items
		}
	}
	if err := m.rbBind(f, params, args, kw, block, s, at, f.static); err != nil {
		return nil, err
	}
	if len(params) == 0 && len(args) > 0 {
		s.declare("it", args[0])
		for i, a := range args {
			s.declare("_"+string(rune('1'+min(i, 8))), a)
		}
	}
	if f.node.Flag&code.Arrow != 0 {
		return m.eval(f.node.Kid(1), s)
	}
	return m.rbBody(f.node.Kid(1).Kids, s)
}

// rbInvoke runs a method of the tree.
func (m *machine) rbInvoke(f *function, self any, args []any, kw *object, block any, at spot) (any, error) {
	if f.native != nil {
		if kw != nil {
			args = append(slices.Clone(args), kw)
		}
		return f.native(m, self, args, nil, at)
	}
	if f.bound { // a lambda, a block
		v, err := m.rbRun(f, f.this, args, kw, block, at)
		if l, ok := err.(*leave); ok && (l.kind == "continue" || l.kind == "return" && f.static) {
			return l.v, nil
		}
		return v, err
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	s := &scope{vars: map[string]*cell{}, up: f.scope, module: f.scope.module, this: self, fn: f, own: true, block: block, static: f.scope.module.file.Funcs[f.node]}
	s.given, s.givenKeys = args, kw
	if err := m.rbBind(f, paramsOf(f.node.Kid(0)), args, kw, block, s, at, true); err != nil {
		return nil, err
	}
	v, err := m.rbBody(f.node.Kid(1).Kids, s)
	if l, ok := err.(*leave); ok && l.kind == "return" && (l.owner == nil || l.owner == any(s)) {
		return l.v, nil
	}
	return v, err
}

// rbBind gives parameters their values; strict where too few or too many are an
// error.
func (m *machine) rbBind(f *function, params []*code.Node, args []any, kw *object, block any, s *scope, at spot, strict bool) error {
	takes, rest := false, false
	required, most := 0, 0
	for _, p := range params {
		switch {
		case p.Alias == ":" || p.Alias == "**":
			takes = true
		case p.Alias == "&":
		case p.Flag&code.Rest != 0:
			rest = true
		default:
			if most++; p.Kid(0) == nil {
				required++
			}
		}
	}
	made := f.node.Kid(0).Is(code.Params) && f.node.Kids[0].Off == f.node.Kids[0].End && f.name == "initialize" && len(params) > 0
	if kw != nil && !takes && made { // of a structure: by name
		for _, p := range params {
			if v, ok := kw.get(symbolKey + p.Name); ok {
				s.declare(p.Name, v)
			} else {
				s.declare(p.Name, nil)
			}
		}
		return nil
	}
	if kw != nil && !takes {
		args = append(slices.Clone(args), kw)
		kw = nil
	}
	if strict && (len(args) < required || len(args) > most && !rest) {
		return raise("ArgumentError", "wrong number of arguments for "+f.name)
	}
	used := 0
	optional := max(0, len(args)-required) // how many defaults are not needed
	taken := map[string]bool{}
	for i, p := range params {
		switch {
		case p.Alias == "&":
			s.declare(p.Name, block)
		case p.Alias == "**":
			o := newObject()
			o.dict = true
			if kw != nil {
				for _, k := range kw.keys {
					if !taken[k] {
						o.set(k, kw.cells[k].v)
					}
				}
			}
			s.declare(p.Name, o)
		case p.Alias == ":":
			if kw != nil {
				if v, ok := kw.get(symbolKey + p.Name); ok {
					s.declare(p.Name, v)
					taken[symbolKey+p.Name] = true
					continue
				}
			}
			if p.Kid(0) == nil {
				return raise("ArgumentError", "missing keyword: "+p.Name)
			}
			v, err := m.eval(p.Kids[0], s)
			if err != nil {
				return err
			}
			s.declare(p.Name, v)
		case p.Flag&code.Rest != 0:
			after := 0
			for _, q := range params[i+1:] {
				if q.Alias == "" && q.Kid(0) == nil {
					after++
				}
			}
			end := max(used, len(args)-after)
			s.declare(p.Name, &list{items: slices.Clone(args[min(used, len(args)):min(end, len(args))])})
			used = end
		default:
			v := any(nil)
			switch {
			case p.Kid(0) != nil && optional == 0:
				x, err := m.eval(p.Kids[0], s)
				if err != nil {
					return err
				}
				v = x
			case used < len(args):
				v = args[used]
				used++
				if p.Kid(0) != nil {
					optional--
				}
			}
			if p.Kid(1) != nil {
				if err := m.rbSpread(p.Kids[1], v, s); err != nil {
					return err
				}
				continue
			}
			s.declare(p.Name, v)
		}
	}
	return nil
}

// rbNew makes an object.
func (m *machine) rbNew(c *class, args []any, kw *object, block any, at spot) (any, error) {
	if len(c.tupled) > 0 { // a structure
		if f, _ := rbMethod(c, "initialize"); f == nil {
			return m.rbFill(c, args, kw)
		}
	}
	o := newObject()
	o.class, o.made = c, &at
	if f, home := rbMethod(c, "initialize"); f != nil {
		w := *f
		w.home = home
		if _, err := m.rbInvoke(&w, o, args, kw, block, at); err != nil {
			return nil, err
		}
		if _, ok := o.get("message"); !ok && rbFails(c) {
			o.set("message", first(args))
		}
		return o, nil
	}
	if base := outer(c); base != nil {
		if len(args) > 0 {
			o.set("message", args[0])
		}
		if !rbFails(c) {
			if _, err := m.rbOutside(&opaque{path: base.path + ".new", recv: base}, args, kw, block, at); err != nil {
				return nil, err
			}
		}
	}
	return o, nil
}

// rbFails reports whether a class is one of errors.
func rbFails(c *class) bool {
	base := outer(c)
	return base != nil && (rbErrors[base.path] != "" || base.path == "Exception" || strings.HasSuffix(base.path, "Error"))
}

// rbFill makes a structure: by place, or by name.
func (m *machine) rbFill(c *class, args []any, kw *object) (any, error) {
	o := newObject()
	o.class = c
	if len(args) > len(c.tupled) {
		return nil, raise("ArgumentError", "struct size differs")
	}
	for i, t := range c.tupled {
		name := show(t)
		v := any(nil)
		if i < len(args) {
			v = args[i]
		}
		if kw != nil {
			if x, ok := kw.get(symbolKey + name); ok {
				v = x
			}
		}
		o.set("@"+name, v)
	}
	return o, nil
}

// rbAssign runs an assignment.
func (m *machine) rbAssign(n *code.Node, s *scope) (any, error) {
	sign := strings.TrimSuffix(n.Name, "=")
	to := n.Kid(0)
	if sign == "" {
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		if to.Is(code.Array) {
			return v, m.rbSpread(to, v, s)
		}
		return v, m.assign(to, v, s, "")
	}
	old := any(nil)
	var err error
	switch {
	case to.Is(code.Name) && (to.Name[0] < 'A' || to.Name[0] > 'Z') && to.Name[0] != '$':
		if c := rbLocal(s, to.Name); c != nil {
			old = c.v
		}
	case to.Is(code.Name) && to.Name[0] != '$':
		old, _ = m.rbConst(to.Name, s)
		if old == any(undefined) {
			old = nil
		}
	default:
		if old, err = m.eval(to, s); err != nil {
			return nil, err
		}
	}
	switch sign {
	case "||", "&&":
		yes, err := m.decide(old, s, to)
		if err != nil {
			return m.oneOfTo(err, to, n.Kid(1), s)
		}
		if yes == (sign == "||") {
			return old, nil
		}
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		return v, m.assign(to, v, s, "")
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	v, err := m.rbOperate(sign, old, b, s, spot{s.module.file, n})
	if err != nil {
		return nil, err
	}
	return v, m.assign(to, v, s, "")
}

func (m *machine) rbBinary(n *code.Node, s *scope) (any, error) {
	if n.Name == "rescue" {
		m.trying++
		v, err := m.eval(n.Kid(0), s)
		m.trying--
		t, ok := err.(*thrown)
		if !ok {
			return v, err
		}
		takes, ok := m.rbCatches("", t, s)
		if !ok {
			return nil, undecided("whether %s is caught", t.String())
		}
		if !takes {
			return nil, err
		}
		return m.eval(n.Kid(1), s)
	}
	a, err := m.subject(n, s)
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
	}
	if n.Name == code.Fits {
		fits, ok, err := m.rbFits(n.Kid(1), a, s)
		if err != nil {
			return nil, err
		}
		if !ok {
			return dontKnow("whether a case fits"), nil
		}
		return fits, nil
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	if f, ok := a.(*function); ok && (n.Name == ">>" || n.Name == "<<") { // one after the other
		g := b
		return &function{static: true, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			p, q := any(f), g
			if n.Name == "<<" {
				p, q = g, f
			}
			v, err := m.rbSend(p, "call", args, nil, nil, s, at)
			if err != nil {
				return nil, err
			}
			return m.rbSend(q, "call", []any{v}, nil, nil, s, at)
		}}, nil
	}
	v, err := m.rbOperate(n.Name, a, b, s, spot{s.module.file, n})
	if text, ok := a.(string); ok && n.Name == "<<" && err == nil && text != v { // the text itself grows
		k := n.Kid(0)
		for k.Is(code.Binary) && k.Name == "<<" {
			k = k.Kid(0)
		}
		if k.Is(code.Name) || k.Is(code.Member) && ofSelf(k) {
			return v, m.assign(k, v, s, "")
		}
		return nil, giveUp("a text that grows")
	}
	return v, err
}

// rbAssignTo gives a value to a target.
func (m *machine) rbAssignTo(to *code.Node, v any, s *scope) error {
	at := spot{s.module.file, to}
	switch to.Kind {
	case code.Name:
		m.rbSet(to.Name, v, s)
		return nil
	case code.Array:
		return m.rbSpread(to, v, s)
	case code.Member:
		if ofSelf(to) {
			o, name := m.rbVariable(to, s)
			o.set(name, v)
			return nil
		}
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		if base == nil && to.Flag&code.OptionalOp != 0 {
			return nil
		}
		if o, ok := base.(*opaque); ok {
			if o.path != "" {
				if o.props == nil {
					o.props = newObject()
				}
				o.props.set(to.Name, v)
			}
			return nil
		}
		if c, ok := base.(*class); ok && to.Name[0] >= 'A' && to.Name[0] <= 'Z' {
			c.statics.set(to.Name, v)
			return nil
		}
		_, err = m.rbSend(base, to.Name+"=", []any{v}, nil, nil, s, at)
		return err
	case code.Index:
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		k, err := m.eval(to.Kid(1), s)
		if err != nil {
			return err
		}
		if _, ok := base.(*opaque); ok {
			return nil
		}
		_, err = m.rbSend(base, "[]=", []any{k, v}, nil, nil, s, at)
		return err
	case code.Spread:
		return m.rbAssignTo(to.Kid(0), v, s)
	}
	return giveUp("a target that is not followed")
}
