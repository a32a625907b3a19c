package trace

import (
	"math"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
)

// What programs of PHP do (PHP manual, "Language Reference", 8.4; read 2026-11):
// arrays are maps in an order and are copied, a function sees its own variables,
// a file that is included goes on with those at hand.

// phpState is what a program of PHP has beside its scopes.
type phpState struct {
	lasting   map[*code.Node]*cell // static variables of functions
	functions map[string]*function
	classes   map[string]*class // by the last part of the name, in lower case
	consts    map[string]any
	loaded    map[string]bool
	loaders   []any             // that find the file of a class
	spaces    map[string]string // the namespace of a file
	globals   *scope
	env       *object // $_ENV
	server    *object // $_SERVER, once the program has set something in it
	putenv    bool    // a dotenv library sets the environment, too
	fromFile  map[string]bool
}

func (m *machine) ph() *phpState {
	if m.php == nil {
		m.php = &phpState{functions: map[string]*function{}, classes: map[string]*class{}, consts: map[string]any{}, loaded: map[string]bool{}, spaces: map[string]string{}}
	}
	return m.php
}

func (s *scope) php() bool { return s.module.file.Lang == code.PHP }

// phArray is an array without elements.
func phArray() *object {
	o := newObject()
	o.dict = true
	return o
}

func isArray(v any) (*object, bool) {
	o, ok := v.(*object)
	return o, ok && o.dict && o.class == nil
}

// phKey is a key of an array as a text; whole numbers are what they read as.
func phKey(v any) (string, bool) {
	switch v := v.(type) {
	case string:
		return v, true
	case integer:
		return show(v), true
	case bool:
		if v {
			return "1", true
		}
		return "0", true
	case float64:
		return show(integer(math.Trunc(v))), true
	case nil:
		return "", true
	case *object: // a case of an enumeration is no key
		return "", false
	}
	return "", false
}

// phKeyOf is a key as a value.
func phKeyOf(k string) any {
	if i, err := strconv.ParseInt(k, 10, 64); err == nil && strconv.FormatInt(i, 10) == k {
		return integer(i)
	}
	return k
}

// phPush adds an element behind all that have a number.
func (m *machine) phPush(o *object, v any) error {
	if len(o.keys) > maxItems {
		return spent("a list that is too long")
	}
	next := int64(0)
	for _, k := range o.keys {
		if i, ok := phKeyOf(k).(integer); ok && int64(i) >= next {
			next = int64(i) + 1
		}
	}
	o.set(strconv.FormatInt(next, 10), v)
	return nil
}

func phList(items []any) *object {
	o := phArray()
	for i, x := range items {
		o.set(strconv.Itoa(i), x)
	}
	return o
}

func phValues(o *object) []any {
	var l []any
	for _, k := range o.keys {
		l = append(l, o.cells[k].v)
	}
	return l
}

// phCopy is an array as it is when it is handed on.
func (m *machine) phCopy(v any, depth int) (any, error) {
	o, ok := isArray(v)
	if !ok || depth > 20 {
		return v, nil
	}
	if err := m.use(64 + 64*len(o.keys)); err != nil {
		return nil, err
	}
	c := phArray()
	for _, k := range o.keys {
		x, err := m.phCopy(o.cells[k].v, depth+1)
		if err != nil {
			return nil, err
		}
		c.set(k, x)
	}
	return c, nil
}

// phShow writes a value as a text.
func phShow(v any) string {
	switch v := v.(type) {
	case nil, undef:
		return ""
	case bool:
		if v {
			return "1"
		}
		return ""
	case float64:
		return strconv.FormatFloat(v, 'G', 14, 64)
	case *object:
		if v.dict {
			return "Array"
		}
	}
	return show(v)
}

func (m *machine) phText(v any, s *scope, at spot) (any, error) {
	switch x := v.(type) {
	case *opaque, *function, *class:
		return dontKnow("a text with what is not known"), nil
	case *object:
		if x.dict {
			return "Array", nil
		}
		if f, _ := phMethod(x.class, "__toString"); f != nil {
			return m.phInvoke(f, x, nil, nil, at)
		}
		return nil, giveUp("an object as text")
	case *content:
		return x.text, nil
	}
	return phShow(v), nil
}

func phTruth(v any) (yes, ok bool) {
	switch x := v.(type) {
	case string:
		return x != "" && x != "0", true
	case *object:
		return !x.dict || len(x.keys) > 0, true
	case *content:
		return x.text != "" && x.text != "0", true
	}
	return truth(v, true)
}

// phNumber is what a value counts as; ok is false where it is no number.
func phNumber(v any) (n any, ok bool) {
	switch x := v.(type) {
	case integer, float64:
		return x, true
	case nil, undef:
		return integer(0), true
	case bool:
		if x {
			return integer(1), true
		}
		return integer(0), true
	case *content:
		return phNumber(strings.TrimSpace(x.text))
	case string:
		t := strings.TrimSpace(x)
		if i, err := strconv.ParseInt(t, 10, 64); err == nil {
			return integer(i), true
		}
		if f, err := strconv.ParseFloat(t, 64); err == nil && !strings.ContainsAny(t, "xXpPnN_") {
			return f, true
		}
		// What stands at its front counts.
		end := 0
		for end < len(t) && (t[end] >= '0' && t[end] <= '9' || end == 0 && (t[0] == '-' || t[0] == '+')) {
			end++
		}
		if i, err := strconv.ParseInt(t[:end], 10, 64); err == nil {
			return integer(i), false
		}
		return integer(0), false
	}
	return integer(0), false
}

func phInt(v any) integer {
	n, _ := phNumber(v)
	if f, ok := n.(float64); ok {
		return integer(math.Trunc(f))
	}
	if o, ok := isArray(v); ok && len(o.keys) > 0 {
		return 1
	}
	return n.(integer)
}

// runPHP runs a file.
func (m *machine) runPHP(name string) error {
	f := m.e.Loader.File(name)
	if f == nil || f.Body == nil {
		return giveUp("%s could not be read", name)
	}
	mod := &module{file: f, exports: newObject()}
	mod.top = &scope{vars: map[string]*cell{}, module: mod, static: f.Top, this: undefined, own: true}
	m.modules[name] = mod
	m.ph().globals = mod.top
	m.ph().loaded[name] = true
	args := phList(m.argv())
	mod.top.declare("$argv", args)
	mod.top.declare("$argc", integer(len(args.keys)))
	_, err := m.phFile(f, mod.top)
	return err
}

// phFile runs the statements of a file; what functions and classes it declares
// is there from the start.
func (m *machine) phFile(f *code.File, s *scope) (any, error) {
	m.phDeclare(f.Body.Kids, s)
	err := m.block(f.Body.Kids, s)
	if l, ok := err.(*leave); ok && l.kind == "return" {
		return l.v, nil
	}
	if err != nil {
		return nil, err
	}
	return integer(1), nil
}

func (m *machine) phDeclare(kids []*code.Node, s *scope) {
	for _, n := range kids {
		switch {
		case n.Is(code.Func) && n.Name != "":
			m.ph().functions[strings.ToLower(n.Name)] = &function{name: n.Name, node: n, scope: s}
		case n.Is(code.Class) && n.Name != "" && m.ph().classes[strings.ToLower(n.Name)] == nil:
			m.phClass(n, s)
		case n.Is(code.Block):
			m.phDeclare(n.Kids, s)
		case n.Is(code.ExprStmt) && n.Kid(0).Is(code.Call) && n.Kids[0].Kid(0).Is(code.Name) && n.Kids[0].Kids[0].Name == "namespace" && n.Kids[0].Kid(1).Is(code.String):
			m.ph().spaces[s.module.file.Name] = n.Kids[0].Kids[1].Name
		}
	}
}

// phClass makes a class that is declared.
func (m *machine) phClass(n *code.Node, s *scope) *class {
	c := &class{name: n.Name, node: n, statics: newObject(), methods: newObject()}
	in := &scope{vars: map[string]*cell{}, up: s, module: s.module, this: c, own: true, static: s.module.file.Inside[n]}
	if in.static == nil {
		in.static = s.static
	}
	c.scope = in
	c.enum = strings.HasPrefix(jvHead(n, s.module.file), "enum")
	for _, k := range n.Kid(1).Kids {
		if k.Is(code.Func) {
			f := &function{name: k.Name, node: k, scope: in, home: c, static: k.Flag&code.Static != 0}
			c.methods.set(strings.ToLower(k.Name), f)
		}
	}
	if n.Name != "" {
		m.ph().classes[strings.ToLower(n.Name)] = c
	}
	return c
}

// phReady works out the constants and static properties of a class once.
func (m *machine) phReady(c *class) error {
	if c.readable != nil || c.node == nil {
		return nil
	}
	c.readable = map[string]bool{}
	for _, b := range c.node.Kid(0).Kids {
		if kind := strings.ToLower(b.Name); c.enum && (kind == "string" || kind == "int") { // what its cases are backed by
			continue
		}
		v, err := m.phNamed(b.Name, c.scope)
		if err != nil {
			return err
		}
		if base, ok := v.(*class); ok {
			if err := m.phReady(base); err != nil {
				return err
			}
		}
		c.bases = append(c.bases, v)
	}
	for _, k := range c.node.Kid(1).Kids {
		switch {
		case k.Is(code.ExprStmt) && k.Kid(0).Is(code.Name) && k.Kids[0].Name != "" && strings.HasPrefix(jvHead(k, c.scope.module.file), "use"):
		case k.Is(code.Import): // a trait
			v, err := m.phNamed(k.Name, c.scope)
			if err != nil {
				return err
			}
			if t, ok := v.(*class); ok {
				if err := m.phReady(t); err != nil {
					return err
				}
				for _, name := range t.methods.keys {
					if c.methods.cells[name] == nil {
						w := *t.methods.cells[name].v.(*function)
						w.home = c
						c.methods.set(name, &w)
					}
				}
				c.fields = append(c.fields, t.fields...)
			}
		case k.Is(code.Bind) && k.Kid(0).Is(code.Name):
			name := k.Kids[0].Name
			if name[0] == '$' {
				c.fields = append(c.fields, k)
			}
			v := any(nil)
			if k.Kid(1) != nil {
				var err error
				if v, err = m.eval(k.Kids[1], c.scope); err != nil {
					return err
				}
			}
			if c.enum && name[0] != '$' && strings.HasPrefix(c.scope.module.file.Between(max(0, k.Off-8), k.Off, 8), "case") || c.enum && strings.HasSuffix(strings.TrimSpace(string(c.scope.module.file.Src[max(0, int(k.Off)-6):k.Off])), "case") {
				o := newObject()
				o.class = c
				o.set("name", name)
				o.set("value", v)
				c.tupled = append(c.tupled, o)
				v = o
			}
			c.statics.set(name, v)
		}
	}
	return nil
}

func phMethod(c *class, name string) (*function, *class) {
	if c == nil {
		return nil, nil
	}
	for _, x := range c.line() {
		if x.methods == nil {
			continue
		}
		if v, ok := x.methods.get(strings.ToLower(name)); ok {
			if f, ok := v.(*function); ok {
				return f, x
			}
		}
	}
	return nil, nil
}

// phFull is the name of a class with its namespace.
func (m *machine) phFull(name string, s *scope) string {
	name = strings.TrimPrefix(name, `\`)
	head, rest, qualified := strings.Cut(name, `\`)
	for _, i := range s.module.file.Imports {
		if i.Node.Name == head && qualified || strings.HasSuffix(i.Node.Name, `\`+head) && i.Node.Alias == "" || i.Node.Alias == head {
			if qualified {
				return i.Node.Name + `\` + rest
			}
			return i.Node.Name
		}
	}
	src := s.module.file
	if space := m.ph().spaces[src.Name]; space != "" && !qualified {
		return space + `\` + name
	}
	return name
}

// phNamed is the class that a name stands for: one that is declared, one whose
// file is found by its name, or one from outside.
func (m *machine) phNamed(name string, s *scope) (any, error) {
	switch strings.ToLower(name) {
	case "self", "static":
		x := s.frame()
		if strings.ToLower(name) == "static" {
			if o, ok := x.this.(*object); ok && o.class != nil {
				return o.class, nil
			}
			if c, ok := x.this.(*class); ok {
				return c, nil
			}
		}
		if x.fn != nil && x.fn.home != nil {
			return x.fn.home, nil
		}
		if c, ok := x.this.(*class); ok {
			return c, nil
		}
		return nil, giveUp("a class around")
	case "parent":
		x := s.frame()
		if x.fn != nil && x.fn.home != nil {
			for _, b := range x.fn.home.bases {
				return b, nil
			}
		}
		return nil, giveUp("a base that is not followed")
	}
	last := strings.ToLower(name[strings.LastIndexByte(name, '\\')+1:])
	for _, i := range s.module.file.Imports {
		if i.Node.Alias == name && name != "" {
			last = strings.ToLower(i.Node.Name[strings.LastIndexByte(i.Node.Name, '\\')+1:])
		}
	}
	if c := m.ph().classes[last]; c != nil {
		return c, m.phReady(c)
	}
	full := m.phFull(name, s)
	for _, ask := range []string{full, name} {
		if to, ok := m.e.Loader.Resolve(s.module.file, ask, ""); ok && !m.ph().loaded[to] {
			if _, err := m.phInclude(to, m.ph().globals); err != nil {
				return nil, err
			}
		}
	}
	for _, l := range m.ph().loaders {
		if m.ph().classes[last] == nil {
			if _, err := m.phApply(l, []any{full}, s, spot{s.module.file, s.module.file.Body}); err != nil {
				if t, ok := err.(*stop); ok && strings.Contains(t.why, "could not be read") {
					continue
				}
				return nil, err
			}
		}
	}
	if c := m.ph().classes[last]; c != nil {
		return c, m.phReady(c)
	}
	return m.package1(full), nil
}

// phInclude runs a file with the variables at hand.
func (m *machine) phInclude(name string, s *scope) (any, error) {
	f := m.e.Loader.File(name)
	if f == nil || f.Body == nil || f.Lang != code.PHP {
		return nil, giveUp("%s could not be read", name)
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("files that load each other without end")
	}
	defer func() { m.depth-- }()
	m.ph().loaded[name] = true
	mod := &module{file: f, exports: newObject()}
	in := &scope{vars: s.vars, up: s.up, module: mod, this: s.this, fn: s.fn, own: true, static: f.Top}
	mod.top = in
	m.modules[name] = mod
	return m.phFile(f, in)
}

// phErrors are the classes that errors of PHP come from (PHP manual,
// "Predefined Exceptions", "SPL Exceptions").
var phErrors = map[string]string{
	"Exception": "Throwable", "Error": "Throwable", "ErrorException": "Exception", "RuntimeException": "Exception", "LogicException": "Exception", "InvalidArgumentException": "LogicException", "DomainException": "LogicException", "LengthException": "LogicException", "OutOfRangeException": "LogicException", "BadFunctionCallException": "LogicException", "BadMethodCallException": "BadFunctionCallException",
	"OutOfBoundsException": "RuntimeException", "RangeException": "RuntimeException", "UnexpectedValueException": "RuntimeException", "OverflowException": "RuntimeException", "UnderflowException": "RuntimeException", "TypeError": "Error", "ValueError": "Error", "ArithmeticError": "Error", "DivisionByZeroError": "ArithmeticError", "UnhandledMatchError": "Error", "ArgumentCountError": "TypeError", "JsonException": "Exception",
}

// phStatement runs what PHP has of its own; done is false for what all languages
// have.
func (m *machine) phStatement(n *code.Node, s *scope) (done bool, err error) {
	switch n.Kind {
	case code.Bind:
		if n.Kid(1) == nil {
			return true, nil
		}
		if n.Flag&code.Static != 0 && s.frame().fn != nil {
			c := m.ph().lasting[n]
			if c == nil {
				v, err := m.eval(n.Kids[1], s)
				if err != nil {
					return true, err
				}
				if m.ph().lasting == nil {
					m.ph().lasting = map[*code.Node]*cell{}
				}
				c = &cell{v: v}
				m.ph().lasting[n] = c
			}
			if n.Kid(0).Is(code.Name) {
				s.frame().vars[n.Kids[0].Name] = c
			}
			return true, nil
		}
		if n.Kids[1].Flag&code.Address != 0 && n.Kid(0).Is(code.Name) { // the variable itself
			c, err := m.phCell(n.Kids[1], s)
			if err != nil {
				return true, err
			}
			s.frame().vars[n.Kids[0].Name] = c
			return true, nil
		}
		v, err := m.eval(n.Kids[1], s)
		if err != nil {
			return true, err
		}
		if n.Name == "const" && n.Kid(0).Is(code.Name) && n.Kids[0].Name[0] != '$' {
			m.ph().consts[n.Kids[0].Name] = v
			return true, nil
		}
		return true, m.phAssignTo(n.Kids[0], v, s)
	case code.Func:
		if n.Name != "" {
			m.ph().functions[strings.ToLower(n.Name)] = &function{name: n.Name, node: n, scope: s}
		}
		return true, nil
	case code.Class:
		if m.ph().classes[strings.ToLower(n.Name)] == nil {
			m.phClass(n, s)
		}
		return true, nil
	case code.Import:
		return true, nil
	case code.Jump:
		switch {
		case n.Name == "global":
			for _, k := range n.Kids {
				c := m.ph().globals.vars[k.Name]
				if c == nil {
					c = &cell{}
					m.ph().globals.vars[k.Name] = c
				}
				s.frame().vars[k.Name] = c
			}
			return true, nil
		case n.Name == "yield":
			return true, m.phYield(n, s)
		case n.Kid(0) != nil: // break 2
			return true, giveUp("several loops that are left")
		}
	case code.Throw:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return true, err
		}
		return true, phThrown(v)
	case code.Loop:
		if n.Name == "of" {
			return true, m.phEach(n, s)
		}
	}
	return false, nil
}

func phThrown(v any) error {
	if o, ok := v.(*opaque); ok {
		name := strings.TrimSuffix(o.path, "()")
		msg := ""
		if len(o.args) > 0 {
			msg = phShow(o.args[0])
		}
		err := raise(name[strings.LastIndexByte(name, '\\')+1:], msg)
		if made := err.(*thrown).v.(*object); len(o.args) > 1 {
			made.set("code", o.args[1])
			if len(o.args) > 2 {
				if t, ok := phThrown(o.args[2]).(*thrown); ok && o.args[2] != nil {
					made.set("previous", t.v)
				}
			}
		}
		return err
	}
	return &thrown{v}
}

// phEach is a loop over an array or an object.
func (m *machine) phEach(n *code.Node, s *scope) error {
	over, err := m.eval(n.Kid(1), s)
	if err != nil {
		return err
	}
	var keys []string
	var from *object
	switch v := over.(type) {
	case *object:
		from = v
		if v.class != nil && !v.dict {
			a, err := m.phEachOf(v, spot{s.module.file, n})
			if err != nil {
				return err
			}
			from = a.(*object)
		}
		keys = slices.Clone(from.keys)
	case *envMap:
		from = m.envObject(true)
		keys = from.keys
	case nil:
		return nil
	default:
		return undecided("a loop over what is not known")
	}
	values := make([]any, len(keys))
	for i, k := range keys {
		values[i] = from.cells[k].v
	}
	label := m.label
	m.label = ""
	for i, k := range keys {
		if i > maxTurns && len(m.calls) > 0 {
			return &exit{stays: true}
		}
		v, err := m.phCopy(values[i], 0)
		if err != nil {
			return err
		}
		if err := m.phAssignTo(n.Kid(0), v, s); err != nil {
			return err
		}
		if n.Alias != "" {
			phSet(s, n.Alias, phKeyOf(k))
		}
		_, err = m.statement(n.Kids[len(n.Kids)-1], s)
		if n.Flag&code.Address != 0 && n.Kid(0).Is(code.Name) { // what it is set to stays in the array
			if c := s.frame().vars[n.Kids[0].Name]; c != nil && from.cells[k] != nil {
				from.cells[k].v = c.v
			}
		}
		l, ok := err.(*leave)
		switch {
		case !ok || l.label != "" && l.label != label:
			if err != nil {
				return err
			}
		case l.kind == "break":
			return nil
		case l.kind != "continue":
			return err
		}
	}
	return nil
}

// phVar finds a variable.
func phVar(s *scope, name string) *cell {
	if strings.HasPrefix(name, "$$") { // the variable that another one names
		c := phVar(s, name[1:])
		if c == nil {
			return nil
		}
		if _, isText := c.v.(string); !isText {
			return nil
		}
		name = "$" + c.v.(string)
	}
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

func phSet(s *scope, name string, v any) {
	if c := phVar(s, name); c != nil {
		c.v = v
		return
	}
	s.declare(name, v)
}

// phAssignTo gives a value to a target; arrays are copied.
func (m *machine) phAssignTo(to *code.Node, v any, s *scope) error {
	v, err := m.phCopy(v, 0)
	if err != nil {
		return err
	}
	switch to.Kind {
	case code.Name:
		if to.Name[0] != '$' {
			return giveUp("a target that is not followed")
		}
		name := to.Name
		for strings.HasPrefix(name, "$$") {
			c := phVar(s, name[strings.LastIndexByte(name, '$'):])
			if c == nil {
				return giveUp("a variable that is named by nothing")
			}
			t, isText := c.v.(string)
			if !isText {
				return undecided("a variable that another one names")
			}
			name = name[:strings.LastIndexByte(name, '$')-1] + "$" + t
		}
		phSet(s, name, v)
		return nil
	case code.Array, code.Object:
		return m.phTake(to, v, s)
	case code.Member:
		if to.Flag&code.Static != 0 {
			base, err := m.phBase(to.Kid(0), s)
			if err != nil {
				return err
			}
			if c, ok := base.(*class); ok {
				for _, x := range c.line() {
					if x.statics.cells[to.Name] != nil {
						x.statics.set(to.Name, v)
						return nil
					}
				}
				c.statics.set(to.Name, v)
			}
			return nil
		}
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		name, err := m.phProperty(to, s)
		if err != nil {
			return err
		}
		switch b := base.(type) {
		case *object:
			if b.class != nil && b.cells[name] == nil {
				if f, home := phMethod(b.class, "__set"); f != nil {
					w := *f
					w.home = home
					_, err := m.phInvoke(&w, b, []any{name, v}, nil, spot{s.module.file, to})
					return err
				}
			}
			b.set(name, v)
		case *opaque:
			if b.path != "" {
				if b.props == nil {
					b.props = newObject()
				}
				b.props.set(name, v)
			}
		default:
			return giveUp("a property of nothing")
		}
		return nil
	case code.Index:
		o, err := m.phPlace(to.Kid(0), s)
		if err != nil || o == nil {
			return err
		}
		if to.Kid(1) == nil { // $a[] = …
			if _, done, err := m.phOwn(o, "offsetSet", []any{nil, v}, spot{s.module.file, to}); done || err != nil {
				return err
			}
			return m.phPush(o, v)
		}
		k, err := m.eval(to.Kid(1), s)
		if err != nil {
			return err
		}
		if _, done, err := m.phOwn(o, "offsetSet", []any{k, v}, spot{s.module.file, to}); done || err != nil {
			return err
		}
		key, ok := phKey(k)
		if !ok {
			return undecided("an element that is not known is set")
		}
		o.set(key, v)
		return nil
	}
	return giveUp("a target that is not followed")
}

// phOwn calls a method with which an object does what arrays do (PHP manual,
// "ArrayAccess", "Countable", "IteratorAggregate"); done is false where it has none.
func (m *machine) phOwn(o *object, method string, args []any, at spot) (v any, done bool, err error) {
	if o.class == nil || o.dict || o.class.builtin {
		return nil, false, nil
	}
	f, home := phMethod(o.class, method)
	if f == nil {
		return nil, false, nil
	}
	w := *f
	w.home = home
	v, err = m.phInvoke(&w, o, args, nil, at)
	return v, true, err
}

// phEachOf is what a loop over an object goes through, as an array.
func (m *machine) phEachOf(o *object, at spot) (any, error) {
	v, done, err := m.phOwn(o, "getIterator", nil, at)
	if err != nil {
		return nil, err
	}
	if done {
		if made, ok := v.(*opaque); ok && strings.HasSuffix(made.path, "ArrayIterator()") && len(made.args) > 0 {
			v = made.args[0]
		}
		if x, ok := v.(*object); ok && x != o {
			if x.dict || x.class == nil {
				return x, nil
			}
			return m.phEachOf(x, at)
		}
		return nil, giveUp("a loop over an object")
	}
	if _, done, err := m.phOwn(o, "rewind", nil, at); !done || err != nil {
		return nil, firstError(err, "a loop over an object")
	}
	a := phArray()
	for {
		ok, _, err := m.phOwn(o, "valid", nil, at)
		if err != nil {
			return nil, err
		}
		yes, isKnown := phTruth(ok)
		if !isKnown || len(a.keys) > maxItems {
			return nil, giveUp("a loop over an object")
		}
		if !yes {
			return a, nil
		}
		x, _, err := m.phOwn(o, "current", nil, at)
		if err != nil {
			return nil, err
		}
		k, _, err := m.phOwn(o, "key", nil, at)
		if err != nil {
			return nil, err
		}
		key, isKey := phKey(k)
		if !isKey {
			return nil, giveUp("a loop over an object")
		}
		a.set(key, x)
		if _, _, err := m.phOwn(o, "next", nil, at); err != nil {
			return nil, err
		}
	}
}

// phFault sets what an error is made with: its message, its code, what came before it.
func phFault(o *object, args []any, keys map[string]any) {
	for i, name := range []string{"message", "code", "previous"} {
		if v, ok := keys[name]; ok {
			o.set(name, v)
		} else if i < len(args) {
			o.set(name, args[i])
		}
	}
}

// phPlace is the array that a target stands for, made where there is none; nil
// for something from outside.
func (m *machine) phPlace(n *code.Node, s *scope) (*object, error) {
	var v any
	var err error
	switch n.Kind {
	case code.Name:
		switch n.Name {
		case "$_ENV":
			return m.phEnv(), nil
		case "$_SERVER":
			return m.phServer(), nil
		case "$GLOBALS":
			return nil, giveUp("the environment is set")
		}
		c := phVar(s, n.Name)
		if c == nil {
			s.declare(n.Name, nil)
			c = s.vars[n.Name]
		}
		if c.v == nil {
			c.v = phArray()
		}
		v = c.v
	case code.Index:
		o, err := m.phPlace(n.Kid(0), s)
		if err != nil || o == nil {
			return o, err
		}
		if n.Kid(1) == nil {
			in := phArray()
			return in, m.phPush(o, in)
		}
		k, err := m.eval(n.Kids[1], s)
		if err != nil {
			return nil, err
		}
		key, ok := phKey(k)
		if !ok {
			return nil, undecided("an element that is not known is set")
		}
		if c := o.cells[key]; c == nil || c.v == nil {
			o.set(key, phArray())
		}
		v = o.cells[key].v
	default:
		if v, err = m.eval(n, s); err != nil {
			return nil, err
		}
		if v == nil {
			a := phArray()
			return a, m.phAssignKeep(n, a, s)
		}
	}
	switch x := v.(type) {
	case *object:
		return x, nil
	case *opaque:
		return nil, nil
	}
	return nil, giveUp("an element of what is no array")
}

// phCell is the place of a variable or an element.
func (m *machine) phCell(n *code.Node, s *scope) (*cell, error) {
	switch n.Kind {
	case code.Name:
		if c := phVar(s, n.Name); c != nil {
			return c, nil
		}
		s.declare(n.Name, nil)
		return s.vars[n.Name], nil
	case code.Index:
		o, err := m.phPlace(n.Kid(0), s)
		if err != nil || o == nil || n.Kid(1) == nil {
			return nil, firstError(err, "an element that is shared")
		}
		k, err := m.eval(n.Kids[1], s)
		if err != nil {
			return nil, err
		}
		key, ok := phKey(k)
		if !ok {
			return nil, undecided("an element that is not known")
		}
		if o.cells[key] == nil {
			o.set(key, nil)
		}
		return o.cells[key], nil
	}
	return nil, giveUp("a place that is shared")
}

func firstError(err error, why string) error {
	if err != nil {
		return err
	}
	return giveUp("%s", why)
}

// phAssignKeep gives an array to a property without copying it.
func (m *machine) phAssignKeep(n *code.Node, a *object, s *scope) error {
	if err := m.phAssignTo(n, nil, s); err != nil {
		return err
	}
	if n.Is(code.Member) && n.Flag&code.Static == 0 {
		if base, err := m.eval(n.Kid(0), s); err == nil {
			if o, ok := base.(*object); ok {
				o.set(n.Name, a)
				return nil
			}
		}
	}
	return giveUp("an array that is made on the way")
}

// phTake takes an array apart.
func (m *machine) phTake(to *code.Node, v any, s *scope) error {
	o, ok := isArray(v)
	if !ok && v != nil {
		return undecided("the parts of what is not known")
	}
	for i, k := range to.Kids {
		key, target := strconv.Itoa(i), k
		if k.Is(code.Pair) {
			key, target = k.Name, k.Kid(0)
			if k.Kid(1) != nil {
				x, err := m.eval(k.Kids[1], s)
				if err != nil {
					return err
				}
				key, _ = phKey(x)
			}
		}
		if target == nil || target.Is(code.Undefined) {
			continue
		}
		x := any(nil)
		if o != nil {
			if c := o.cells[key]; c != nil {
				x = c.v
			}
		}
		if err := m.phAssignTo(target, x, s); err != nil {
			return err
		}
	}
	return nil
}

// phProperty is the name of a member, which a variable may hold.
func (m *machine) phProperty(n *code.Node, s *scope) (string, error) {
	if n.Name == "" || n.Name[0] != '$' {
		return n.Name, nil
	}
	if k := n.Kid(1); k != nil && n.Name == "${}" {
		v, err := m.eval(k, s)
		if err != nil {
			return "", err
		}
		switch v.(type) {
		case string, integer:
			return phShow(v), nil
		}
		return "", giveUp("a property that is named while the program runs")
	}
	c := phVar(s, n.Name)
	if c == nil {
		return "", giveUp("a property that is named while the program runs")
	}
	t, ok := c.v.(string)
	if !ok {
		return "", giveUp("a property that is named while the program runs")
	}
	return t, nil
}

// phBase is the class in front of a double colon.
func (m *machine) phBase(n *code.Node, s *scope) (any, error) {
	if n.Is(code.Name) && n.Name[0] != '$' {
		return m.phNamed(n.Name, s)
	}
	v, err := m.eval(n, s)
	if err != nil {
		return nil, err
	}
	switch x := v.(type) {
	case string:
		return m.phNamed(x, s)
	case *object:
		if x.class != nil {
			return x.class, nil
		}
	}
	return v, nil
}

// phNode evaluates what PHP has of its own; done is false for what all languages
// have.
func (m *machine) phNode(n *code.Node, s *scope) (v any, done bool, err error) {
	at := spot{s.module.file, n}
	switch n.Kind {
	case code.Template:
		var b strings.Builder
		for _, k := range n.Kids {
			v, err := m.eval(k, s)
			if err != nil {
				return nil, true, err
			}
			t, err := m.phText(v, s, at)
			if err != nil {
				return nil, true, err
			}
			text, ok := t.(string)
			if !ok {
				return dontKnow("a text with what is not known"), true, nil
			}
			b.WriteString(text)
			if b.Len() > maxText {
				return nil, true, spent("a text that is too long")
			}
		}
		return b.String(), true, nil
	case code.Name:
		v, err := m.phName(n, s)
		return v, true, err
	case code.Member:
		v, err := m.phMember(n, s)
		return v, true, err
	case code.Index:
		base, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, true, err
		}
		if n.Kid(1) == nil {
			return nil, true, giveUp("an element without a key")
		}
		k, err := m.eval(n.Kids[1], s)
		if err != nil {
			return nil, true, err
		}
		if o, ok := base.(*object); ok {
			if v, done, err := m.phOwn(o, "offsetGet", []any{k}, at); done || err != nil {
				return v, true, err
			}
		}
		v, err := m.phElement(base, k, at)
		return v, true, err
	case code.Call:
		v, err := m.phCall(n, s)
		return v, true, err
	case code.New:
		v, err := m.phNew(n, s)
		return v, true, err
	case code.Func:
		return m.phClosure(n, s), true, nil
	case code.Array:
		if n.Name == code.LastOf && n.Alias == code.Whole {
			v, err := m.jvValue(n.Kid(0), s)
			return v, true, err
		}
		o := phArray()
		for _, k := range n.Kids {
			if err := m.phAdd(o, k, s); err != nil {
				return nil, true, err
			}
		}
		return o, true, nil
	case code.Object:
		o := phArray()
		for _, k := range n.Kids {
			if err := m.phAdd(o, k, s); err != nil {
				return nil, true, err
			}
		}
		return o, true, nil
	case code.Binary:
		v, err := m.phBinary(n, s)
		return v, true, err
	case code.Assign:
		v, err := m.phAssign(n, s)
		return v, true, err
	case code.Unary:
		switch n.Name {
		case "++", "--":
			old, err := m.eval(n.Kid(0), s)
			if err != nil {
				return nil, true, err
			}
			next, err := m.phOperate(n.Name[:1], old, integer(1), s, at)
			if err != nil {
				return nil, true, err
			}
			if err := m.phAssignTo(n.Kids[0], next, s); err != nil {
				return nil, true, err
			}
			if n.Off < n.Kids[0].Off {
				return next, true, nil
			}
			return old, true, nil
		case "-":
			v, err := m.eval(n.Kid(0), s)
			if err != nil {
				return nil, true, err
			}
			r, err := m.phOperate("-", integer(0), v, s, at)
			return r, true, err
		}
	case code.Null:
		return nil, true, nil
	case code.Block, code.ExprStmt, code.If, code.Throw, code.Bind, code.Return, code.Jump:
		_, err := m.statement(n, s)
		return nil, true, err
	}
	return nil, false, nil
}

func (m *machine) phAdd(o *object, k *code.Node, s *scope) error {
	switch {
	case k.Is(code.Spread):
		v, err := m.eval(k.Kid(0), s)
		if err != nil {
			return err
		}
		a, ok := isArray(v)
		if !ok {
			return undecided("an array that is not known")
		}
		for _, key := range a.keys {
			if _, isInt := phKeyOf(key).(integer); isInt {
				if err := m.phPush(o, a.cells[key].v); err != nil {
					return err
				}
			} else {
				o.set(key, a.cells[key].v)
			}
		}
		return nil
	case k.Is(code.Pair):
		key := k.Name
		if k.Kid(1) != nil {
			x, err := m.eval(k.Kids[1], s)
			if err != nil {
				return err
			}
			var ok bool
			if key, ok = phKey(x); !ok {
				return undecided("a key that is not known")
			}
		}
		v, err := m.eval(k.Kid(0), s)
		if err != nil {
			return err
		}
		v, err = m.phCopy(v, 0)
		o.set(key, v)
		return err
	}
	v, err := m.eval(k, s)
	if err != nil {
		return err
	}
	return m.phPush(o, v)
}

func (m *machine) phName(n *code.Node, s *scope) (any, error) {
	name := n.Name
	switch name {
	case "$this":
		if x := s.frame(); x.this != nil && x.this != any(undefined) {
			return x.this, nil
		}
		return nil, nil
	case "$_ENV":
		return m.phEnv(), nil
	case "$_SERVER":
		if p := m.ph(); p.server != nil { // the program has set something in it
			return p.server, nil
		}
		return &envMap{}, nil
	case "$GLOBALS":
		return nil, giveUp("all variables")
	case "__DIR__":
		return path.Dir(root + "/" + s.module.file.Name), nil
	case "__FILE__":
		return root + "/" + s.module.file.Name, nil
	case "__CLASS__":
		if c := rbHome(s); c != nil {
			return c.name, nil
		}
		return "", nil
	case "__FUNCTION__", "__METHOD__", "__LINE__", "__NAMESPACE__":
		return dontKnow(name), nil
	case "exit", "die":
		return nil, &exit{}
	case "PHP_EOL":
		return "\n", nil
	case "DIRECTORY_SEPARATOR":
		return "/", nil
	case "PHP_SAPI":
		return "cli", nil
	case "PHP_BINARY":
		return "php", nil
	case "PHP_OS", "PHP_OS_FAMILY":
		return "Linux", nil
	case "PHP_INT_SIZE":
		return integer(8), nil
	case "PHP_INT_MIN":
		return integer(math.MinInt64), nil
	case "PHP_INT_MAX":
		return integer(math.MaxInt64), nil
	}
	if name[0] == '$' {
		if c := phVar(s, name); c != nil {
			return c.v, nil
		}
		return nil, nil
	}
	if v, ok := m.ph().consts[name[strings.LastIndexByte(name, '\\')+1:]]; ok {
		return v, nil
	}
	return m.package1(name), nil
}

func (m *machine) phElement(base, k any, at spot) (any, error) {
	if !known(k) {
		return dontKnow("an element chosen by what is not known"), nil
	}
	key, ok := phKey(k)
	if !ok {
		return nil, undecided("an element that is not known")
	}
	switch b := base.(type) {
	case nil, bool, integer:
		return nil, nil
	case *envMap:
		if v, ok := m.lookup(key, at); ok {
			return v, nil
		}
		switch key {
		case "argv":
			return phList(m.argv()), nil
		case "argc":
			return integer(len(m.argv())), nil
		case "SCRIPT_FILENAME", "PHP_SELF", "SCRIPT_NAME":
			return root + "/" + m.main.Name, nil
		}
		return nil, nil
	case *object:
		if b.class != nil && !b.dict {
			if f, home := phMethod(b.class, "offsetGet"); f != nil {
				w := *f
				w.home = home
				return m.phInvoke(&w, b, []any{k}, nil, at)
			}
			return nil, giveUp("an element of an object")
		}
		if c := b.cells[key]; c != nil {
			return c.v, nil
		}
		return nil, nil
	case string:
		i, isInt := phKeyOf(key).(integer)
		if i < 0 {
			i += integer(len(b))
		}
		if !isInt || i < 0 || int(i) >= len(b) {
			return "", nil
		}
		return b[i : i+1], nil
	case *opaque:
		return dontKnow("an element of " + b.String()), nil
	}
	return nil, undecided("an element of what is not known")
}

func (m *machine) phMember(n *code.Node, s *scope) (any, error) {
	at := spot{s.module.file, n}
	if n.Flag&code.Static != 0 {
		base, err := m.phBase(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		switch b := base.(type) {
		case *class:
			if n.Name == "class" {
				return b.name, nil
			}
			if v, ok := classKey(b, n.Name, true); ok {
				return v, nil
			}
			return nil, giveUp("%s is not found in %s", n.Name, b.name)
		case *opaque:
			if n.Name == "class" {
				return b.path, nil
			}
			if b.path != "" {
				return &opaque{path: b.path + "." + n.Name, recv: b}, nil
			}
			return b, nil
		}
		return nil, undecided("a class that is not known")
	}
	base, err := m.eval(n.Kid(0), s)
	if err != nil {
		return nil, err
	}
	if base == nil {
		return nil, nil
	}
	name, err := m.phProperty(n, s)
	if err != nil {
		return nil, err
	}
	switch b := base.(type) {
	case *object:
		if c := b.cells[name]; c != nil {
			return c.v, nil
		}
		if b.class != nil {
			if f, home := phMethod(b.class, "__get"); f != nil {
				w := *f
				w.home = home
				return m.phInvoke(&w, b, []any{name}, nil, at)
			}
		}
		return nil, nil
	case *opaque:
		if b.props != nil {
			if v, ok := b.props.get(name); ok {
				return v, nil
			}
		}
		if b.path != "" {
			return &opaque{path: b.path + "." + name, recv: b}, nil
		}
		return b, nil
	}
	return nil, giveUp("the property %s", name)
}

// phClosure is a function without a name: what it uses is taken when it is made.
func (m *machine) phClosure(n *code.Node, s *scope) *function {
	f := &function{node: n, scope: s, this: s.frame().this, bound: true}
	if x := s.frame(); x.fn != nil {
		f.home = x.fn.home
	}
	if n.Flag&code.Arrow == 0 {
		f.props = newObject()
		for _, u := range strings.Split(n.Alias, ",") {
			name, shared := strings.CutPrefix(u, "&")
			if name == "" {
				continue
			}
			c := phVar(s, name)
			switch {
			case c == nil && shared:
				s.declare(name, nil)
				f.props.link(name, s.vars[name])
			case c == nil:
				f.props.set(name, nil)
			case shared:
				f.props.link(name, c)
			default:
				f.props.set(name, c.v)
			}
		}
	}
	return f
}

// phInvoke runs a function or a method; refs are the variables that it is given
// themselves.
func (m *machine) phInvoke(f *function, this any, args []any, refs []*cell, at spot) (any, error) {
	return m.phInvokeKeys(f, this, args, nil, refs, at)
}

func (m *machine) phInvokeKeys(f *function, this any, args []any, keys map[string]any, refs []*cell, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if f.native != nil {
		return f.native(m, this, args, keys, at)
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	s := &scope{vars: map[string]*cell{}, up: f.scope, module: f.scope.module, this: this, fn: f, own: true, static: f.scope.module.file.Funcs[f.node], given: args}
	if f.bound {
		s.this = f.this
		if f.node.Flag&code.Arrow != 0 { // it sees what surrounds it, and changes nothing there
			for x := f.scope; x != nil; x = x.up {
				for k, c := range x.vars {
					if s.vars[k] == nil {
						s.vars[k] = &cell{v: c.v}
					}
				}
				if x.own {
					break
				}
			}
			s.fn = f.scope.frame().fn
		}
	}
	if f.props != nil {
		for _, k := range f.props.keys {
			s.vars[k] = f.props.cells[k]
			if !strings.Contains(f.node.Alias, "&"+k) {
				s.vars[k] = &cell{v: f.props.cells[k].v}
			}
		}
	}
	params := paramsOf(f.node.Kid(0))
	for i, p := range params {
		switch {
		case p.Flag&code.Rest != 0:
			s.declare(p.Name, phList(slices.Clone(args[min(i, len(args)):])))
			continue
		case p.Alias == "&" && i < len(refs) && refs[i] != nil:
			s.vars[p.Name] = refs[i]
			continue
		}
		v, ok := any(nil), false
		if i < len(args) {
			var err error
			if v, err = m.phCopy(args[i], 0); err != nil {
				return nil, err
			}
			ok = true
		} else if x, given := keys[strings.TrimPrefix(p.Name, "$")]; given {
			v, ok = x, true
		}
		if !ok {
			if p.Kid(0) == nil {
				return nil, raise("ArgumentCountError", "too few arguments for "+f.name)
			}
			var err error
			if v, err = m.eval(p.Kids[0], s); err != nil {
				return nil, err
			}
		}
		v, err := m.phTyped(p, v, f)
		if err != nil {
			return nil, err
		}
		s.declare(p.Name, v)
		if o, isObject := this.(*object); isObject && p.Flag&code.Exported != 0 { // a property too
			o.set(strings.TrimPrefix(p.Name, "$"), v)
		}
	}
	body := f.node.Kid(1)
	if f.node.Flag&code.Arrow != 0 {
		return m.eval(body, s)
	}
	if phGives(body) { // all that it gives, at once
		made := phArray()
		m.phGiven = append(m.phGiven, made)
		err := m.block(body.Kids, s)
		m.phGiven = m.phGiven[:len(m.phGiven)-1]
		if l, ok := err.(*leave); ok && l.kind == "return" {
			err = nil
		}
		return made, err
	}
	err := m.block(body.Kids, s)
	if l, ok := err.(*leave); ok && l.kind == "return" {
		if l.v == any(undefined) {
			return nil, nil
		}
		return m.phReturned(f, l.v)
	}
	return nil, err
}

// phGives reports whether a function is a generator (PHP manual, "Generators").
func phGives(body *code.Node) bool {
	found := false
	body.Walk(func(k *code.Node) bool {
		found = found || k.Is(code.Jump) && k.Name == "yield"
		return !found && !k.Is(code.Func) && !k.Is(code.Class)
	})
	return found
}

// phYield hands on what a generator gives.
func (m *machine) phYield(n *code.Node, s *scope) error {
	if len(m.phGiven) == 0 {
		return giveUp("what a generator gives")
	}
	to := m.phGiven[len(m.phGiven)-1]
	next := func() string {
		n := 0
		for _, k := range to.keys {
			if i, ok := atoi(k); ok && i >= n {
				n = i + 1
			}
		}
		return strconv.Itoa(n)
	}
	put := func(k string, v any) { // a generator may give one key twice
		if to.cells[k] != nil {
			k = next()
		}
		to.set(k, v)
	}
	var v any
	var err error
	if n.Kid(0) != nil {
		if v, err = m.eval(n.Kid(0), s); err != nil {
			return err
		}
	}
	if len(to.keys) > maxItems {
		return giveUp("a generator without an end")
	}
	switch {
	case n.Alias == "from":
		from, ok := isArray(v)
		if !ok {
			return giveUp("what a generator gives")
		}
		for _, k := range from.keys {
			put(k, from.cells[k].v)
		}
	case n.Kid(1) != nil:
		k, err := m.eval(n.Kid(1), s)
		if err != nil {
			return err
		}
		if _, ok := k.(string); !ok {
			if _, ok := k.(integer); !ok {
				return giveUp("a key that a generator gives")
			}
		}
		put(phShow(k), v)
	default:
		to.set(next(), v)
	}
	return nil
}

// phTyped makes of a text what a parameter of a number takes, where types are not
// strict.
func (m *machine) phTyped(p *code.Node, v any, f *function) (any, error) {
	src := f.scope.module.file.Src
	head := ""
	if int(p.Off) < len(src) && p.Off < p.End {
		head = string(src[p.Off:p.End])
	}
	if nullable := strings.ContainsAny(head, "?|"); v == nil && !nullable && p.Kid(0) == nil {
		for _, w := range strings.Fields(head) {
			if w == "int" || w == "string" || w == "float" || w == "bool" || w == "array" {
				return nil, certainly("TypeError", f.name+"() wants "+w+", null given")
			}
		}
	}
	typ := strings.TrimPrefix(strings.Fields(head + " x")[0], "?")
	for _, w := range strings.Fields(head) {
		if phpWords[w] {
			continue
		}
		typ = strings.TrimPrefix(w, "?")
		break
	}
	return m.phCast(typ, v, f)
}

var phpWords = map[string]bool{"public": true, "private": true, "protected": true, "readonly": true, "final": true}

func (m *machine) phCast(typ string, v any, f *function) (any, error) {
	strict := strings.Contains(string(f.scope.module.file.Src[:min(400, len(f.scope.module.file.Src))]), "strict_types=1")
	switch typ {
	case "int":
		switch x := v.(type) {
		case string:
			n, ok := phNumber(x)
			if strict || !ok {
				return nil, certainly("TypeError", "an int is wanted")
			}
			return n, nil
		case nil:
			return v, nil
		case bool:
			if !strict {
				return phInt(x), nil
			}
			return nil, certainly("TypeError", "an int is wanted")
		}
	case "string":
		switch v.(type) {
		case integer, float64, bool:
			if strict {
				return nil, certainly("TypeError", "a string is wanted")
			}
			return phShow(v), nil
		}
	case "float":
		if i, ok := v.(integer); ok {
			return float64(i), nil
		}
	}
	return v, nil
}

// phReturned is what a function gives as its type says: the text between the
// parameters and the body.
func (m *machine) phReturned(f *function, v any) (any, error) {
	src := f.scope.module.file.Src
	from, to := f.node.Kid(0).End, f.node.Kid(1).Off
	if int(to) > len(src) || from > to || from < 0 {
		return v, nil
	}
	typ := strings.TrimSpace(strings.Trim(strings.TrimSpace(string(src[from:to])), ":{ "))
	return m.phCast(strings.TrimPrefix(typ, "?"), v, f)
}

func (m *machine) phArguments(n *code.Node, s *scope) (args []any, keys map[string]any, refs []*cell, err error) {
	for _, a := range n.Args() {
		switch {
		case a.Is(code.Keyword):
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, nil, err
			}
			if keys == nil {
				keys = map[string]any{}
			}
			keys[a.Name] = v
		case a.Is(code.Spread):
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, nil, err
			}
			o, ok := isArray(v)
			if !ok {
				return nil, nil, nil, undecided("arguments that are not known")
			}
			for _, k := range o.keys {
				if _, isInt := phKeyOf(k).(integer); isInt {
					args = append(args, o.cells[k].v)
					refs = append(refs, nil)
				} else {
					if keys == nil {
						keys = map[string]any{}
					}
					keys[k] = o.cells[k].v
				}
			}
		default:
			v, err := m.eval(a, s)
			if err != nil {
				return nil, nil, nil, err
			}
			var ref *cell
			if a.Is(code.Name) && a.Name[0] == '$' {
				if ref = phVar(s, a.Name); ref == nil {
					ref = &cell{} // it may be set by what is called
					s.vars[a.Name] = ref
				}
			}
			args = append(args, v)
			refs = append(refs, ref)
		}
	}
	return args, keys, refs, nil
}

func (m *machine) phNew(n *code.Node, s *scope) (any, error) {
	var base any
	var err error
	if k := n.Kid(0); k.Is(code.Class) {
		base = m.phClass(k, s)
	} else if k.Is(code.Name) && k.Name[0] == '$' {
		base, err = m.phBase(k, s)
	} else {
		base, err = m.phNamed(k.Name, s)
	}
	if err != nil {
		return nil, err
	}
	args, keys, _, err := m.phArguments(n, s)
	if err != nil {
		return nil, err
	}
	at := spot{s.module.file, n}
	switch c := base.(type) {
	case *class:
		return m.phMake(c, args, keys, at)
	case *opaque:
		name := c.path[strings.LastIndexByte(c.path, '\\')+1:]
		if phErrors[name] != "" {
			o := madeError(name, "")
			phFault(o, args, keys)
			return o, nil
		}
		switch name {
		case "stdClass":
			o := newObject()
			o.class = &class{name: name, builtin: true, statics: newObject(), methods: newObject()}
			return o, nil
		case "ArrayIterator": // what it goes through
			if a, ok := isArray(first(args)); ok {
				return a, nil
			}
			return dontKnow("a " + name), nil
		case "ArrayObject", "SplFileInfo", "DateTime", "PDO":
			return dontKnow("a " + name), nil
		}
		if m.note(c, args, keys, at) {
			return nil, &exit{stays: true}
		}
		m.handed(args, keys, name, at)
		return &opaque{path: c.path + "()", recv: c, args: args, keys: keys, fresh: true}, nil
	}
	return nil, giveUp("what is made anew: %s", s.module.file.Text(n))
}

func (m *machine) phMake(c *class, args []any, keys map[string]any, at spot) (any, error) {
	if err := m.phReady(c); err != nil {
		return nil, err
	}
	o := newObject()
	o.class, o.made = c, &at
	line := c.line()
	for _, x := range slices.Backward(line) {
		for _, k := range x.fields {
			if k.Flag&code.Static != 0 {
				continue
			}
			v := any(nil)
			if k.Kid(1) != nil {
				var err error
				if v, err = m.eval(k.Kids[1], x.scope); err != nil {
					return nil, err
				}
			}
			o.set(strings.TrimPrefix(k.Kid(0).Name, "$"), v)
		}
	}
	if f, home := phMethod(c, "__construct"); f != nil {
		w := *f
		w.home = home
		_, err := m.phInvokeKeys(&w, o, args, keys, nil, at)
		return o, err
	}
	if b := outer(c); b != nil {
		phFault(o, args, keys)
		m.note(b, args, keys, at)
	}
	return o, nil
}

func (m *machine) phCall(n *code.Node, s *scope) (any, error) {
	callee := n.Kid(0)
	at := spot{s.module.file, n}
	if src := s.module.file.Src; callee.Is(code.Name) && len(n.Kids) == 2 && int(n.Off) < len(src) && src[n.Off] == '(' && callee.Off > n.Off { // a cast
		v, err := m.eval(n.Kids[1], s)
		if err != nil {
			return nil, err
		}
		return m.phConvert(callee.Name, v, s, at)
	}
	if callee.Is(code.Name) && callee.Name[0] != '$' {
		if v, done, err := m.phSpecial(strings.ToLower(strings.TrimPrefix(callee.Name, `\`)), n, s); done || err != nil {
			return v, err
		}
	}
	if strings.HasSuffix(strings.ReplaceAll(string(s.module.file.Src[min(int(max(0, n.End-8)), len(s.module.file.Src)):min(int(n.End), len(s.module.file.Src))]), " ", ""), "(...)") { // the function as a value
		fn := callee
		return &function{native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
			return m.phTarget(fn, s, a, nil, nil, at)
		}}, nil
	}
	args, keys, refs, err := m.phArguments(n, s)
	if err != nil {
		return nil, err
	}
	return m.phTarget(callee, s, args, keys, refs, at)
}

// phTarget calls what stands in front of the arguments.
func (m *machine) phTarget(callee *code.Node, s *scope, args []any, keys map[string]any, refs []*cell, at spot) (any, error) {
	switch {
	case callee.Is(code.Name) && callee.Name[0] == '$':
		c := phVar(s, callee.Name)
		if c == nil {
			return nil, giveUp("what is called is not set")
		}
		return m.phApplyKeys(c.v, args, keys, refs, s, at)
	case callee.Is(code.Name):
		name := callee.Name[strings.LastIndexByte(callee.Name, '\\')+1:]
		if f := m.ph().functions[strings.ToLower(name)]; f != nil {
			return m.phInvokeKeys(f, undefined, args, keys, refs, at)
		}
		if v, done, err := m.phBuiltin(strings.ToLower(name), args, keys, refs, s, at); done || err != nil {
			return v, err
		}
		return m.phOutside(m.package1(name), args, keys, at)
	case callee.Is(code.Member) && callee.Flag&code.Static != 0:
		base, err := m.phBase(callee.Kid(0), s)
		if err != nil {
			return nil, err
		}
		name, err := m.phProperty(callee, s)
		if err != nil {
			return nil, err
		}
		switch b := base.(type) {
		case *class:
			if f, home := phMethod(b, name); f != nil {
				w := *f
				w.home = home
				this := any(b)
				k := strings.ToLower(callee.Kid(0).Name)
				if x := s.frame(); !f.static && (k == "parent" || k == "self" || k == "static") { // of this object
					this = x.this
				}
				if x, ok := s.frame().this.(*class); ok && f.static && (k == "parent" || k == "self") {
					this = x
				}
				return m.phInvokeKeys(&w, this, args, keys, refs, at)
			}
			if v, done, err := phEnum(b, name, args); done || err != nil {
				return v, err
			}
			if f, home := phMethod(b, "__callStatic"); f != nil {
				w := *f
				w.home = home
				return m.phInvoke(&w, b, []any{name, phList(args)}, nil, at)
			}
			if o := outer(b); o != nil {
				return m.phOutside(&opaque{path: o.path + "." + name, recv: o}, args, keys, at)
			}
			return nil, giveUp("%s is not found in %s", name, b.name)
		case *opaque:
			if name == "__construct" { // of a base from outside
				if o, ok := s.frame().this.(*object); ok {
					if o.cells["message"] == nil {
						phFault(o, args, keys)
					}
					if o.made != nil {
						at = *o.made
					}
				}
				m.note(b, args, keys, at)
				return nil, nil
			}
			return m.phOutside(&opaque{path: b.path + "." + name, recv: b}, args, keys, at)
		}
		return nil, undecided("a class that is not known")
	case callee.Is(code.Member):
		base, err := m.eval(callee.Kid(0), s)
		if err != nil {
			return nil, err
		}
		if base == nil && callee.Flag&code.OptionalOp != 0 {
			return nil, nil
		}
		name, err := m.phProperty(callee, s)
		if err != nil {
			return nil, err
		}
		return m.phSend(base, name, args, keys, refs, s, at)
	}
	fn, err := m.eval(callee, s)
	if err != nil {
		return nil, err
	}
	return m.phApplyKeys(fn, args, keys, refs, s, at)
}

// phSend calls a method.
func (m *machine) phSend(base any, name string, args []any, keys map[string]any, refs []*cell, s *scope, at spot) (any, error) {
	switch b := base.(type) {
	case nil:
		return nil, certainly("Error", "Call to a member function "+name+"() on null")
	case *object:
		if b.class != nil {
			if f, home := phMethod(b.class, name); f != nil {
				w := *f
				w.home = home
				return m.phInvokeKeys(&w, b, args, keys, refs, at)
			}
			if c := b.cells[name]; c != nil {
				if fn, ok := c.v.(*function); ok {
					return m.phApplyKeys(fn, args, keys, refs, s, at)
				}
			}
			switch strings.ToLower(name) {
			case "getmessage":
				if msg, ok := b.get("message"); ok {
					return msg, nil
				}
				return "", nil
			case "getcode":
				if c, ok := b.get("code"); ok && c != any(undefined) {
					return c, nil
				}
				return integer(0), nil
			case "getprevious":
				if c, ok := b.get("previous"); ok && c != any(undefined) {
					return c, nil
				}
				return nil, nil
			case "getline":
				return integer(0), nil
			case "gettraceasstring", "getfile", "gettrace":
				return nil, nil
			}
			if f, home := phMethod(b.class, "__call"); f != nil {
				w := *f
				w.home = home
				return m.phInvoke(&w, b, []any{name, phList(args)}, nil, at)
			}
			if o := outer(b.class); o != nil {
				return m.phOutside(&opaque{path: o.path + "()." + name, self: b}, args, keys, at)
			}
		}
		return nil, giveUp("the method %s", name)
	case *class:
		if f, home := phMethod(b, name); f != nil {
			w := *f
			w.home = home
			return m.phInvokeKeys(&w, b, args, keys, refs, at)
		}
	case *function:
		switch strings.ToLower(name) {
		case "call", "__invoke", "bindto", "bind":
			if name == "__invoke" {
				return m.phApplyKeys(b, args, keys, refs, s, at)
			}
			w := *b
			w.this = first(args)
			if strings.HasPrefix(strings.ToLower(name), "bind") {
				return &w, nil
			}
			return m.phApplyKeys(&w, args[min(1, len(args)):], keys, nil, s, at)
		}
	case *opaque:
		if b.path == "" {
			m.handed(args, keys, name, at)
			return dontKnow("what " + firstOf(b.why, name) + " gives"), nil
		}
		return m.phOutside(&opaque{path: b.path + "." + name, recv: b}, args, keys, at)
	}
	return nil, giveUp("the method %s of what is not followed", name)
}

// phEnum are the functions that an enumeration has.
func phEnum(c *class, name string, args []any) (any, bool, error) {
	if !c.enum {
		return nil, false, nil
	}
	switch name {
	case "cases":
		return phList(c.tupled), true, nil
	case "from", "tryFrom":
		if len(args) != 1 {
			return nil, false, nil
		}
		if !known(args[0]) {
			return dontKnow("a case that is not known"), true, nil
		}
		for _, x := range c.tupled {
			v, _ := x.(*object).get("value")
			if same, ok := phEqual(v, args[0], false); ok && same {
				return x, true, nil
			}
		}
		if name == "tryFrom" {
			return nil, true, nil
		}
		return nil, true, raise("ValueError", "no case of "+c.name)
	}
	return nil, false, nil
}

// phApply calls what is handed over as a function: a closure, the name of one, an
// object and a method.
func (m *machine) phApply(fn any, args []any, s *scope, at spot) (any, error) {
	return m.phApplyKeys(fn, args, nil, nil, s, at)
}

func (m *machine) phApplyKeys(fn any, args []any, keys map[string]any, refs []*cell, s *scope, at spot) (any, error) {
	switch f := fn.(type) {
	case *function:
		return m.phInvokeKeys(f, f.this, args, keys, refs, at)
	case string:
		if class, method, ok := strings.Cut(f, "::"); ok {
			c, err := m.phNamed(class, s)
			if err != nil {
				return nil, err
			}
			return m.phSend(c, method, args, keys, refs, s, at)
		}
		return m.phTarget(&code.Node{Kind: code.Name, Name: f}, s, args, keys, refs, at)
	case *object:
		if f.dict && len(f.keys) == 2 {
			items := phValues(f)
			name, ok := items[1].(string)
			if c, isName := items[0].(string); isName && ok {
				of, err := m.phNamed(c, s)
				if err != nil {
					return nil, err
				}
				items[0] = of
			}
			if ok {
				return m.phSend(items[0], name, args, keys, refs, s, at)
			}
		}
		if f.class != nil {
			return m.phSend(f, "__invoke", args, keys, refs, s, at)
		}
	case *opaque:
		return dontKnow("what " + f.String() + " gives"), nil
	}
	return nil, giveUp("what is called is no function")
}

// PHPServes is the path of the call that starts the web server of PHP from a
// program.
const PHPServes = "php -S"

// phOutside calls something of a library.
func (m *machine) phOutside(o *opaque, args []any, keys map[string]any, at spot) (any, error) {
	if v, done, err := m.phDotenv(o, args, at); done || err != nil {
		return v, err
	}
	if waitsPHP[o.path] && len(m.calls) > 0 {
		return nil, &exit{stays: true}
	}
	if m.note(o, args, keys, at) {
		return nil, &exit{stays: true}
	}
	name := o.path[strings.LastIndexAny(o.path, `.\`)+1:]
	m.handed(args, keys, name, at)
	for _, a := range args {
		if f, ok := a.(*function); ok && !passed[name] && f.node != nil {
			m.kept = append(m.kept, job{f, nil, at})
		}
	}
	if len(o.path) > 400 {
		return dontKnow("a chain of calls"), nil
	}
	if o.path == "socket_bind" { // it is taken to work, as listening is
		return true, nil
	}
	return &opaque{path: o.path + "()", recv: o, args: args, keys: keys, fresh: makers[o.path]}, nil
}

// waitsPHP are the functions that wait for who connects (PHP manual, "Sockets",
// "Streams").
var waitsPHP = map[string]bool{"stream_socket_accept": true, "socket_accept": true, "socket_select": true, "stream_select": true}

// phStarts is a command that a program starts: the web server of PHP is noted.
func (m *machine) phStarts(l launch, at spot) (stays bool, err error) {
	words := l.words
	if line, ok := l.line.(string); ok && words == nil {
		for _, w := range strings.Fields(line) {
			words = append(words, w)
		}
	}
	text := func(i int) string {
		t, _ := words[i].(string)
		return strings.Trim(t, `'"`)
	}
	if len(words) > 0 && path.Base(text(0)) == "exec" {
		words = words[1:]
	}
	for i := 1; i < len(words) && path.Base(text(0)) == "php"; i++ {
		addr := ""
		switch w := text(i); {
		case w == "-S" && i+1 < len(words):
			addr = text(i + 1)
		case strings.HasPrefix(w, "-S") && len(w) > 2:
			addr = w[2:]
		default:
			continue
		}
		m.note(m.package1(PHPServes), []any{strings.NewReplacer("'", "", `"`, "").Replace(addr)}, nil, at)
		return true, &exit{stays: true}
	}
	if m.e.Launch == nil {
		return false, giveUp("another program that is started")
	}
	return m.launches(l, at)
}

func (m *machine) phAssign(n *code.Node, s *scope) (any, error) {
	sign := strings.TrimSuffix(n.Name, "=")
	to := n.Kid(0)
	if sign == "" {
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		return v, m.phAssignTo(to, v, s)
	}
	old, err := m.eval(to, s)
	if err != nil {
		return nil, err
	}
	if sign == "??" {
		if old != nil {
			return old, nil
		}
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		return v, m.phAssignTo(to, v, s)
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	if src := s.module.file.Src; sign == "+" && n.Kid(1) != nil && int(n.Kids[1].Off) <= len(src) && strings.HasSuffix(strings.TrimRight(string(src[to.End:n.Kids[1].Off]), " \t\r\n(\"'"), ".=") { // .=
		sign = ".+"
	}
	v, err := m.phOperate(sign, old, b, s, spot{s.module.file, n})
	if err != nil {
		return nil, err
	}
	return v, m.phAssignTo(to, v, s)
}

func (m *machine) phBinary(n *code.Node, s *scope) (any, error) {
	at := spot{s.module.file, n}
	if n.Name == "instanceof" {
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		of, err := m.phNamed(n.Kid(1).Dotted(), s)
		if err != nil {
			return nil, err
		}
		o, isObject := v.(*object)
		switch c := of.(type) {
		case *class:
			return isObject && o.class != nil && derives(o.class, c), nil
		case *opaque:
			if isObject && o.class != nil {
				if phErrors[o.class.name] != "" {
					takes, ok := caughtBy(c.path, &thrown{o}, phErrors, '\\')
					if ok {
						return takes, nil
					}
				}
				if c.path == "Closure" {
					return false, nil
				}
			}
			if _, isFn := v.(*function); isFn && c.path == "Closure" {
				return true, nil
			}
			if known(v) && !isObject {
				return false, nil
			}
		}
		return dontKnow("what class something is of"), nil
	}
	a, err := m.subject(n, s)
	if err != nil {
		return nil, err
	}
	switch n.Name {
	case "||", "&&", "xor":
		yes, err := m.decide(a, s, n.Kid(0))
		if err != nil {
			return m.oneOf(err, s, n.Kid(1))
		}
		if n.Alias == code.Elvis {
			if yes {
				return a, nil
			}
			return m.eval(n.Kid(1), s)
		}
		if n.Name != "xor" && yes == (n.Name == "||") {
			return yes, nil
		}
		b, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		other, err := m.decide(b, s, n.Kid(1))
		if err != nil {
			return m.oneOf(err, s)
		}
		if n.Name == "xor" {
			return yes != other, err
		}
		return other, err
	case "??":
		if a == nil || a == any(undefined) {
			return m.eval(n.Kid(1), s)
		}
		if o, ok := a.(*opaque); ok && o.path == "" {
			return nil, undecided("whether %s is there", o.String())
		}
		return a, nil
	}
	b, err := m.eval(n.Kid(1), s)
	if err != nil {
		return nil, err
	}
	return m.phOperate(n.Name, a, b, s, at)
}

// phEqual compares as == or === does; ok is false where that is not known.
func phEqual(a, b any, strict bool) (same, ok bool) {
	if c, isContent := a.(*content); isContent {
		a = c.text
	}
	if c, isContent := b.(*content); isContent {
		b = c.text
	}
	if !known(a) || !known(b) {
		return equals(a, b, true)
	}
	_, boolA := a.(bool)
	_, boolB := b.(bool)
	if boolA != boolB && !strict {
		x, ok1 := phTruth(a)
		y, ok2 := phTruth(b)
		return x == y, ok1 && ok2
	}
	if x, isArr := isArray(a); isArr {
		y, both := isArray(b)
		if !both || len(x.keys) != len(y.keys) {
			return false, both || strict
		}
		for _, k := range x.keys {
			c := y.cells[k]
			if c == nil {
				return false, true
			}
			if same, ok := phEqual(x.cells[k].v, c.v, strict); !ok || !same {
				return same, ok
			}
		}
		return true, true
	}
	switch x := a.(type) {
	case *object:
		y, both := b.(*object)
		if a == b || strict || !both || x.class != y.class {
			return a == b, true
		}
		if x.class == nil || x.class.builtin || len(x.keys) != len(y.keys) {
			return false, false
		}
		for _, k := range x.keys { // field by field
			c := y.cells[k]
			if c == nil {
				return false, true
			}
			if d, ok := c.v.(*object); ok && d.class != nil {
				return false, x.cells[k].v == c.v
			}
			if same, ok := phEqual(x.cells[k].v, c.v, false); !ok || !same {
				return same, ok
			}
		}
		return true, true
	case *function, *class, *envMap:
		return a == b, true
	case string:
		switch y := b.(type) {
		case string:
			if strict || x == y {
				return x == y, true
			}
			p, ok1 := phNumber(x)
			q, ok2 := phNumber(y)
			if ok1 && ok2 {
				f, _ := toNumber(p)
				g, _ := toNumber(q)
				return f == g, true
			}
			return false, true
		case integer, float64:
			if strict {
				return false, true
			}
			p, isNum := phNumber(x)
			if !isNum {
				return x == phShow(y), true
			}
			f, _ := toNumber(p)
			g, _ := toNumber(y)
			return f == g, true
		}
	case integer, float64:
		switch b.(type) {
		case integer, float64:
			_, i1 := a.(integer)
			_, i2 := b.(integer)
			f, _ := toNumber(a)
			g, _ := toNumber(b)
			return f == g && (!strict || i1 == i2), true
		case string:
			return phEqual(b, a, strict)
		}
	}
	if strict {
		return a == b, true
	}
	if a == nil && b == nil {
		return true, true
	}
	if t, isText := a.(string); isText && b == nil {
		return t == "", true
	}
	if t, isText := b.(string); isText && a == nil {
		return t == "", true
	}
	x, ok1 := phTruth(a)
	y, ok2 := phTruth(b)
	return x == y, ok1 && ok2
}

func (m *machine) phOperate(name string, a, b any, s *scope, at spot) (any, error) {
	switch name {
	case "==", "!=", "===", "!==":
		same, ok := phEqual(a, b, len(name) == 3)
		if !ok {
			return dontKnow("whether two things are the same"), nil
		}
		return same == (name[0] == '='), nil
	case ".+":
		x, err := m.phText(a, s, at)
		if err != nil {
			return nil, err
		}
		y, err := m.phText(b, s, at)
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
	for _, x := range []any{a, b} {
		if o, ok := x.(*opaque); ok {
			return dontKnow("what is made of " + o.String()), nil
		}
	}
	if name == "+" {
		if _, env := a.(*envMap); env {
			a = m.envObject(true)
		}
		if _, env := b.(*envMap); env {
			b = m.envObject(true)
		}
	}
	if x, ok := isArray(a); ok && name == "+" {
		if y, ok := isArray(b); ok {
			c, err := m.phCopy(x, 0)
			if err != nil {
				return nil, err
			}
			o := c.(*object)
			for _, k := range y.keys {
				if o.cells[k] == nil {
					o.set(k, y.cells[k].v)
				}
			}
			return o, nil
		}
	}
	x, textA := a.(string)
	y, textB := b.(string)
	n1, ok1 := phNumber(a)
	n2, ok2 := phNumber(b)
	if comparing[name] || name == "<=>" {
		c := 0
		if textA && textB && !(ok1 && ok2) {
			c = strings.Compare(x, y)
		} else {
			if !ok1 || !ok2 {
				return nil, giveUp("what %s gives", name)
			}
			f, _ := toNumber(n1)
			g, _ := toNumber(n2)
			c = compare(f, g)
		}
		if name == "<=>" {
			return integer(c), nil
		}
		return ordered(name, c), nil
	}
	if !ok1 || !ok2 {
		if textA && !ok1 && n1 == any(integer(0)) || textB && !ok2 && n2 == any(integer(0)) {
			return nil, certainly("TypeError", "Unsupported operand types")
		}
		return nil, giveUp("what %s gives", name)
	}
	switch name {
	case "/":
		f, _ := toNumber(n1)
		g, _ := toNumber(n2)
		if g == 0 {
			return nil, raise("DivisionByZeroError", "Division by zero")
		}
		r := f / g
		_, i1 := n1.(integer)
		_, i2 := n2.(integer)
		if i1 && i2 && r == math.Trunc(r) {
			return integer(r), nil
		}
		return r, nil
	case "%":
		p, q := phInt(n1), phInt(n2)
		if q == 0 {
			return nil, raise("DivisionByZeroError", "Modulo by zero")
		}
		return p % q, nil
	}
	v, err := pyOperate(name, n1, n2)
	if _, ok := err.(*thrown); ok {
		return nil, giveUp("what %s gives", name)
	}
	return v, err
}

// phConvert is a cast.
func (m *machine) phConvert(to string, v any, s *scope, at spot) (any, error) {
	if o, ok := v.(*opaque); ok && to != "array" {
		return dontKnow("what is made of " + o.String()), nil
	}
	switch strings.ToLower(to) {
	case "int", "integer":
		return phInt(v), nil
	case "string":
		return m.phText(v, s, at)
	case "bool", "boolean":
		yes, ok := phTruth(v)
		if !ok {
			return dontKnow("whether something counts as true"), nil
		}
		return yes, nil
	case "float", "double":
		n, _ := phNumber(v)
		f, _ := toNumber(n)
		return f, nil
	case "array":
		if _, ok := isArray(v); ok {
			return v, nil
		}
		if v == nil {
			return phArray(), nil
		}
		if o, ok := v.(*object); ok {
			a := phArray()
			for _, k := range o.keys {
				a.set(k, o.cells[k].v)
			}
			return a, nil
		}
		return phList([]any{v}), nil
	case "object":
		o := newObject()
		o.class = &class{name: "stdClass", builtin: true, statics: newObject(), methods: newObject()}
		if a, ok := isArray(v); ok {
			for _, k := range a.keys {
				o.set(k, a.cells[k].v)
			}
		}
		return o, nil
	}
	return v, nil
}
