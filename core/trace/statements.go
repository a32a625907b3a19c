package trace

import (
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// leave is what ends a turn, a loop or a function.
type leave struct {
	kind  string // return, break, continue
	label string
	v     any
	owner any // what it leaves: the scope of a method, a block (Ruby)
}

func (*leave) Error() string { return "outside of what it leaves" }

// block runs statements. What functions are declared among them is there from
// the start.
func (m *machine) block(kids []*code.Node, s *scope) error {
	if javascript(s.module.file.Lang) {
		for _, n := range kids {
			if n.Is(code.Export) {
				n = n.Kid(0)
			}
			if n.Is(code.Func) && n.Name != "" {
				s.declare(n.Name, m.function(n, s))
				if n.Flag&code.Exported != 0 {
					s.module.exports.link(n.Name, s.vars[n.Name])
				}
			}
		}
	}
	broke := false
	for _, n := range kids {
		if n.Is(code.Block) && n.Name == "else" && s.python() { // of the loop before
			if broke {
				continue
			}
		}
		var err error
		broke, err = m.statement(n, s)
		if err != nil {
			return err
		}
	}
	return nil
}

// statement runs one statement; broke says that it is a loop that was broken
// off.
func (m *machine) statement(n *code.Node, s *scope) (broke bool, err error) {
	broke, err = m.statement1(n, s)
	if _, stopped := err.(*stop); !stopped || n == nil {
		return broke, err
	}
	err = placed(err, func() place.Span { return s.module.file.At(n) })
	return false, m.stepOver(err, n, s)
}

// chainedTo is the value that several targets are given in one statement; nil for any
// other block.
func chainedTo(n *code.Node) *code.Node {
	var of *code.Node
	for _, k := range n.Kids {
		a := k.Kid(0)
		if !k.Is(code.ExprStmt) || !a.Is(code.Assign) || a.Name != "=" || len(a.Kids) != 2 || of != nil && a.Kids[1] != of {
			return nil
		}
		of = a.Kids[1]
	}
	if len(n.Kids) < 2 {
		return nil
	}
	return of
}

// stepOver goes on behind a statement that could not be followed, where it changes nothing
// but variables: these are not known from then on.
func (m *machine) stepOver(unknown error, n *code.Node, s *scope) error {
	if !opens(unknown) || !n.Is(code.ExprStmt) && !n.Is(code.Bind) && !n.Is(code.If) && !n.Is(code.Loop) {
		return unknown
	}
	handsOn := false
	n.Walk(func(k *code.Node) bool {
		handsOn = handsOn || k.Is(code.Func) || k.Is(code.Class)
		return !handsOn
	})
	if handsOn { // it may be called any time
		return unknown
	}
	x := &aside{m: m, s: s, own: map[string]bool{}, wary: true}
	if x.statement(n); x.fails || x.ends {
		return unknown
	}
	if n.Is(code.Bind) {
		return m.assign(n.Kid(0), dontKnow(unknown.Error()), s, n.Name)
	}
	return m.forget(x.sets, unknown)
}

func (m *machine) statement1(n *code.Node, s *scope) (broke bool, err error) {
	if n == nil {
		return false, nil
	}
	if s.ruby() {
		_, err := m.rbStatement(n, s)
		return false, err
	}
	if err := m.step(); err != nil {
		return false, err
	}
	if m.depth++; m.depth > maxDepth {
		return false, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	if s.java() {
		if done, err := m.jvStatement(n, s); done || err != nil {
			return false, err
		}
	}
	if s.php() {
		if done, err := m.phStatement(n, s); done || err != nil {
			return false, err
		}
	}
	switch n.Kind {
	case code.Block:
		if n.Alias != "" && n.Name == "" { // a label
			m.label = n.Alias
			broke, err := m.statement(n.Kid(0), s)
			m.label = ""
			if l, ok := err.(*leave); ok && l.label == n.Alias {
				return true, nil
			}
			return broke, err
		}
		switch n.Name {
		case code.Beside:
			return false, giveUp("what follows from the type of something")
		case code.Waits:
			return false, &exit{stays: true}
		}
		if of := chainedTo(n); of != nil && s.python() { // x = y = value: it is worked out once
			v, err := m.eval(of, s)
			for _, k := range n.Kids {
				if err != nil {
					return false, err
				}
				err = m.assign(k.Kids[0].Kids[0], v, s, "")
			}
			return false, err
		}
		in := s
		if src := s.module.file.Src; s.braced() && int(n.Off) < len(src) && src[n.Off] == '{' {
			in = s.inner()
		}
		return false, m.block(n.Kids, in)
	case code.ExprStmt:
		switch n.Name {
		case code.Deferred: // to the end, which is not come to
			return false, nil
		case code.Beside:
			_, err := m.eval(n.Kid(0), s)
			if x, ok := err.(*exit); ok && x.stays {
				err = nil
			}
			return false, err
		}
		_, err := m.eval(n.Kid(0), s)
		return false, err
	case code.Bind:
		return false, m.bind(n, s)
	case code.If:
		v, err := m.eval(n.Kid(0), s)
		if err != nil {
			return false, err
		}
		yes, err := m.decide(v, s, n.Kid(0))
		if err != nil {
			return false, m.either(err, n.Kid(1), n.Kid(2), s)
		}
		if yes {
			return m.statement(n.Kid(1), s)
		}
		return m.statement(n.Kid(2), s)
	case code.Loop:
		return m.loop(n, s)
	case code.Jump:
		if n.Name == "global" {
			for x := s; x != nil; x = x.up {
				if x.own {
					if x.global == nil {
						x.global = map[string]bool{}
					}
					for _, k := range n.Kids {
						x.global[k.Name] = true
					}
					break
				}
			}
			return false, nil
		}
		return false, &leave{kind: n.Name, label: n.Alias}
	case code.Return:
		v := any(undefined)
		if !javascript(s.module.file.Lang) {
			v = nil
		}
		if len(n.Kids) > 1 {
			l := &list{tuple: true}
			for _, k := range n.Kids {
				x, err := m.eval(k, s)
				if err != nil {
					return false, err
				}
				l.items = append(l.items, x)
			}
			return false, &leave{kind: "return", v: l}
		}
		if n.Kid(0) != nil {
			if v, err = m.eval(n.Kids[0], s); err != nil {
				return false, err
			}
		}
		return false, &leave{kind: "return", v: v}
	case code.Throw:
		if n.Kid(0) == nil {
			if c := s.find("\x00caught"); c != nil {
				return false, &thrown{c.v}
			}
			return false, giveUp("what is raised again")
		}
		v, err := m.eval(n.Kids[0], s)
		if err != nil {
			return false, err
		}
		if c, ok := v.(*class); ok {
			if v, err = m.create(c, nil, nil, spot{s.module.file, n}); err != nil {
				return false, err
			}
		}
		if o, ok := v.(*opaque); ok && strings.HasPrefix(o.path, "SystemExit") {
			return false, &exit{}
		}
		return false, &thrown{v}
	case code.Try:
		return false, m.try(n, s)
	case code.With:
		return false, m.with(n, s)
	case code.Switch:
		return false, m.switched(n, s)
	case code.Import:
		return false, m.imports(n, s)
	case code.Export:
		return false, m.export(n, s)
	case code.Func:
		return false, m.declared(n, s)
	case code.Class:
		c, err := m.class(n, s)
		if err != nil {
			return false, err
		}
		v := any(c)
		if s.python() {
			if v, err = m.decorated(n, v, s); err != nil {
				return false, err
			}
		}
		m.assignName(n.Name, v, s, "let")
		if n.Flag&code.Exported != 0 {
			s.module.exports.link(n.Name, s.find(n.Name))
		}
		return false, nil
	}
	return false, giveUp("a statement that is not followed: %s", s.module.file.Text(n))
}

// declared binds a function; what decorates it may put another in its place.
func (m *machine) declared(n *code.Node, s *scope) error {
	if !s.python() {
		if c := s.vars[n.Name]; c == nil && n.Name != "" {
			s.declare(n.Name, m.function(n, s))
		}
		return nil
	}
	v, err := m.decorated(n, m.function(n, s), s)
	if err != nil {
		return err
	}
	m.assignName(n.Name, v, s, "")
	return nil
}

// decorated is what the decorators make of a function or a class of Python.
func (m *machine) decorated(n *code.Node, v any, s *scope) (any, error) {
	for i := len(n.Kids) - 1; i >= 2; i-- {
		d, err := m.eval(n.Kids[i], s)
		if err != nil {
			return nil, err
		}
		switch d := d.(type) {
		case *opaque:
			switch path := strings.TrimSuffix(d.path, "()"); path {
			case "property":
				if f, ok := v.(*function); ok {
					f.getter = true
				}
			case "functools.cached_property", "cached_property", "django.utils.functional.cached_property":
				if f, ok := v.(*function); ok {
					f.getter, f.memo = true, map[string]any{}
				}
			case "staticmethod":
				if f, ok := v.(*function); ok {
					f.static = true
				}
			case "classmethod":
				if f, ok := v.(*function); ok {
					f.classOf = true
				}
			case "dataclasses.dataclass", "attr.s", "attrs.define", "attr.define", "attrs.frozen":
				if c, ok := v.(*class); ok {
					c.data = true
				}
			case "functools.lru_cache", "functools.cache":
				if f, ok := v.(*function); ok {
					f.memo = map[string]any{}
				}
			case "functools.wraps", "functools.wraps()", "typing.final", "typing.overload", "abc.abstractmethod", "enum.unique":
			default:
				if f, ok := v.(*function); ok && m.commands(f, d, path) {
					continue
				}
				if path == "contextlib.contextmanager" || path == "contextlib.asynccontextmanager" {
					continue // what it gives first is what is opened
				}
				if strings.HasPrefix(path, "contextlib.") {
					return dontKnow("what " + path + " makes of " + n.Name), nil
				}
				if f, ok := v.(*function); ok && strings.HasPrefix(path, "pydantic.") {
					f.marks = append(f.marks, d)
					continue
				}
				m.waiting = true // a framework keeps it
			}
		case *function, *class:
			if v, err = m.call(d, undefined, []any{v}, nil, spot{s.module.file, n.Kids[i]}); err != nil {
				return nil, err
			}
		default:
			return dontKnow("what a decorator makes of " + n.Name), nil
		}
	}
	return v, nil
}

// bind runs a declaration.
func (m *machine) bind(n *code.Node, s *scope) error {
	if n.Kid(1) == nil {
		if s.python() {
			return nil
		}
		if k := n.Kid(0); k.Is(code.Name) && (n.Name != "var" || s.find(k.Name) == nil) {
			m.assignName(k.Name, undefined, s, n.Name)
		}
		return nil
	}
	v := any(nil)
	var err error
	if src := s.module.file.Src; n.Kids[1].Is(code.Object) && int(n.Off)+4 < len(src) && strings.HasPrefix(string(src[n.Off:n.Off+4]), "enum") {
		v, err = m.enumeration(n.Kids[1], s)
	} else {
		v, err = m.eval(n.Kids[1], s)
	}
	if err != nil {
		return err
	}
	if f, ok := v.(*function); ok && f.name == "" && n.Kids[0].Is(code.Name) {
		f.name = n.Kids[0].Name
	}
	if o, ok := v.(*object); ok && n.Kids[1].Is(code.Call) && n.Kids[1].Name == code.Namespace && s.vars[n.Kids[0].Name] != nil {
		had := s.vars[n.Kids[0].Name].v // a class, a function or an enum of the name gets more
		for _, k := range o.keys {
			if err := m.setKey(had, k, o.cells[k].v, s, n); err != nil {
				return err
			}
		}
		v = had
	}
	if err := m.assign(n.Kids[0], v, s, n.Name); err != nil {
		return err
	}
	if n.Flag&code.Exported != 0 {
		n.Kids[0].Walk(func(k *code.Node) bool {
			if k.Is(code.Name) && s.vars[k.Name] != nil {
				s.module.exports.link(k.Name, s.vars[k.Name])
			}
			return true
		})
	}
	return nil
}

// enumeration is an enum of TypeScript.
func (m *machine) enumeration(n *code.Node, s *scope) (any, error) {
	o := newObject()
	next := 0.0
	for _, p := range n.Kids {
		k := p.Kid(0)
		if k.Is(code.Assign) {
			v, err := m.eval(k.Kid(1), s)
			if err != nil {
				return nil, err
			}
			o.set(p.Name, v)
			if f, ok := v.(float64); ok {
				next = f + 1
				o.set(number(f), p.Name)
			}
			continue
		}
		o.set(p.Name, next)
		o.set(number(next), p.Name)
		next++
	}
	return o, nil
}

// assignName sets a variable: where it is declared, or in the scope at hand.
func (m *machine) assignName(name string, v any, s *scope, kind string) {
	switch {
	case kind == "var":
		for x := s; x != nil; x = x.up {
			if x.own || x.up == nil {
				x.declare(name, v)
				return
			}
		}
	case kind == "const" || kind == "let" || kind == "using" || kind == "loop":
		s.declare(name, v)
		s.vars[name].fixed = kind == "const" && javascript(s.module.file.Lang)
	case s.python():
		for x := s; x != nil; x = x.up {
			if x.global[name] {
				for y := x.up; y != nil; y = y.up {
					if c := y.vars[name]; c != nil {
						c.v = v
						return
					}
				}
				s.module.top.declare(name, v)
				return
			}
			if x.own || x.up == nil {
				if c := x.vars[name]; c != nil && c.from == nil {
					c.v = v
				} else {
					x.declare(name, v)
				}
				return
			}
		}
	default:
		if c := s.find(name); c != nil {
			c.v = v
			return
		}
		s.module.top.declare(name, v)
	}
}

// assign gives a value to a target: a name, a property, a pattern.
func (m *machine) assign(to *code.Node, v any, s *scope, kind string) error {
	if to == nil {
		return giveUp("a target that was not read")
	}
	if s.ruby() {
		return m.rbAssignTo(to, v, s)
	}
	if s.java() {
		return m.jvAssignTo(to, v, s, kind)
	}
	if s.php() {
		return m.phAssignTo(to, v, s)
	}
	switch to.Kind {
	case code.Name:
		if c := s.find(to.Name); kind == "" && c != nil && c.fixed && javascript(s.module.file.Lang) {
			return certainly("TypeError", "Assignment to constant variable.")
		}
		m.assignName(to.Name, v, s, kind)
		return nil
	case code.Assign: // with a default
		if v == any(undefined) {
			d, err := m.eval(to.Kid(1), s)
			if err != nil {
				return err
			}
			v = d
		}
		return m.assign(to.Kid(0), v, s, kind)
	case code.Member:
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		return m.setKey(base, to.Name, v, s, to)
	case code.Index:
		base, err := m.eval(to.Kid(0), s)
		if err != nil {
			return err
		}
		if kn := to.Kid(1); kn.Is(code.Unknown) && kn.Name == code.Slice && s.python() {
			return m.setSlice(base, kn, v, s)
		}
		k, err := m.eval(to.Kid(1), s)
		if err != nil {
			return err
		}
		return m.setIndex(base, k, v, s, to)
	case code.Object:
		if !known(v) && !named(v) {
			return m.unknownPattern(to, v, s, kind)
		}
		used := map[string]bool{}
		for _, p := range to.Kids {
			if p.Is(code.Spread) {
				o, ok := v.(*object)
				if !ok {
					return undecided("the rest of what is not known")
				}
				rest := newObject()
				for _, k := range o.keys {
					if !used[k] {
						rest.set(k, o.cells[k].v)
					}
				}
				if err := m.assign(p.Kid(0), rest, s, kind); err != nil {
					return err
				}
				continue
			}
			name := p.Name
			if p.Kid(1) != nil {
				k, err := m.eval(p.Kid(1), s)
				if err != nil {
					return err
				}
				name = show(k)
			}
			used[name] = true
			if v == nil || v == any(undefined) {
				return raise("TypeError", "nothing is taken apart")
			}
			x, err := m.key(v, name, s, p)
			if err != nil {
				return err
			}
			if err := m.assign(p.Kid(0), x, s, kind); err != nil {
				return err
			}
		}
		return nil
	case code.Array:
		if o, ok := v.(*opaque); ok && strings.HasSuffix(o.path, ".parse_known_args()") {
			parsed := *o
			parsed.path = strings.TrimSuffix(o.path, "parse_known_args()") + "parse_args()"
			v = &list{items: []any{&parsed, &list{}}, tuple: true}
		}
		if !known(v) {
			return m.unknownPattern(to, v, s, kind)
		}
		items, err := m.items(v, s)
		if err != nil {
			return err
		}
		starred := -1
		for i, k := range to.Kids {
			if k.Is(code.Spread) {
				starred = i
			}
		}
		if s.python() && (starred < 0 && len(items) != len(to.Kids) || starred >= 0 && len(items) < len(to.Kids)-1) {
			return raise("ValueError", "not as many values as names")
		}
		for i, k := range to.Kids {
			x := any(undefined)
			switch {
			case k.Is(code.Undefined):
				continue
			case i == starred:
				end := len(items) - (len(to.Kids) - 1 - i)
				rest := &list{}
				if end > i {
					rest.items = append(rest.items, items[i:end]...)
				}
				if err := m.assign(k.Kid(0), rest, s, kind); err != nil {
					return err
				}
				continue
			case starred >= 0 && i > starred:
				x = items[len(items)-(len(to.Kids)-i)]
			case i < len(items):
				x = items[i]
			}
			if err := m.assign(k, x, s, kind); err != nil {
				return err
			}
		}
		return nil
	case code.Spread:
		return m.assign(to.Kid(0), v, s, kind)
	}
	return giveUp("a target that is not followed")
}

// named reports whether something that is not followed has a path: its
// properties have one too.
func named(v any) bool {
	o, ok := v.(*opaque)
	return ok && o.path != ""
}

func (m *machine) unknownPattern(to *code.Node, v any, s *scope, kind string) error {
	var err error
	to.Walk(func(k *code.Node) bool {
		if k.Is(code.Name) && err == nil {
			m.assignName(k.Name, dontKnow("a part of "+v.(*opaque).String()), s, kind)
		}
		return !k.Is(code.Assign) || k.Kid(0).Is(code.Name)
	})
	return err
}

// holds works out a condition.
func (m *machine) holds(n *code.Node, s *scope) (bool, error) {
	v, err := m.eval(n, s)
	if err != nil {
		return false, err
	}
	return m.decide(v, s, n)
}

// decide is whether a value counts as true.
func (m *machine) decide(v any, s *scope, n *code.Node) (bool, error) {
	if o, ok := v.(*object); ok && s.python() && o.class != nil && !o.class.builtin {
		for _, name := range []string{"__bool__", "__len__"} {
			if f := m.method(o, name); f != nil {
				x, err := m.call(f, o, nil, nil, spot{s.module.file, n})
				if err != nil {
					return false, err
				}
				if yes, ok := truth(x, true); ok {
					return yes, nil
				}
			}
		}
	}
	if yes, ok := s.truth(v); ok {
		return yes, nil
	}
	if o, isOpaque := v.(*opaque); isOpaque && o.path == "" && !m.calledBack {
		return false, undecided("a condition that is not known: %s", o.String())
	}
	if x, ok := m.ask(n, s); ok {
		if yes, ok := s.truth(x); ok {
			return yes, nil
		}
	}
	if o, ok := v.(*opaque); ok {
		return false, undecided("a condition that is not known: %s", o.String())
	}
	return false, undecided("a condition that is not known")
}

// holdsFunction reports whether code makes functions, which keep the variables around them.
func holdsFunction(n *code.Node) bool {
	found := false
	n.Walk(func(k *code.Node) bool {
		found = found || k.Is(code.Func) || k.Is(code.Class)
		return !found
	})
	return found
}

func (m *machine) loop(n *code.Node, s *scope) (broke bool, err error) {
	label := m.label
	m.label = ""
	body := n.Kids[len(n.Kids)-1]
	// turn runs the body once; done says that the loop ends.
	turns := 0
	turn := func(in *scope) (done bool, err error) {
		if turns++; turns > maxTurns && len(m.calls) > 0 { // it serves
			return true, &exit{stays: true}
		}
		_, err = m.statement(body, in)
		l, ok := err.(*leave)
		switch {
		case !ok || l.label != "" && l.label != label:
			return err != nil, err
		case l.kind == "continue":
			return false, nil
		case l.kind == "break":
			broke = true
			return true, nil
		}
		return true, err
	}
	test := func(n *code.Node, in *scope) (yes bool, open, err error) {
		if n.Is(code.Block) || n.Is(code.Undefined) {
			return true, nil, nil
		}
		v, err := m.eval(n, in)
		if err != nil {
			return false, nil, err
		}
		yes, open = m.decide(v, in, n)
		return yes, open, nil
	}
	switch {
	case n.Name == "for" && len(n.Kids) == 4:
		in := s
		if s.braced() {
			in = s.inner()
		}
		if _, err := m.expression(n.Kids[0], in); err != nil {
			return false, err
		}
		kept := s.braced() && holdsFunction(body) // each turn has variables of its own (ECMAScript 2026, 14.7.4.4)
		for {
			yes, open, err := test(n.Kids[1], in)
			if open != nil {
				return false, m.pass(open, in, n.Kids[2:]...)
			}
			if err != nil || !yes {
				return false, err
			}
			if done, err := turn(in); done {
				return broke, err
			}
			if kept {
				next := s.inner()
				for name, c := range in.vars {
					w := *c
					next.vars[name] = &w
				}
				in = next
			}
			if _, err := m.expression(n.Kids[2], in); err != nil {
				return false, err
			}
		}
	case n.Name == "do":
		for {
			if done, err := turn(s); done {
				return broke, err
			}
			yes, open, err := test(n.Kids[0], s)
			if open != nil {
				return false, m.pass(open, s, n.Kids[1])
			}
			if err != nil || !yes {
				return false, err
			}
		}
	case (n.Name == "of" || n.Name == "in" || n.Name == "" && s.python()) && len(n.Kids) == 3:
		over, err := m.eval(n.Kids[1], s)
		if err != nil {
			return false, err
		}
		var items []any
		if n.Name == "in" {
			o, ok := over.(*object)
			if !ok {
				if l, isList := over.(*list); isList {
					for i := range l.items {
						items = append(items, number(float64(i)))
					}
				} else if _, env := over.(*envMap); env {
					for _, k := range m.envKeys() {
						items = append(items, k)
					}
				} else {
					return false, m.pass(undecided("a loop over what is not known"), s, n)
				}
			} else {
				for _, k := range o.keys {
					items = append(items, k)
				}
			}
		} else if s.java() {
			if items, err = m.jvItems(over); err != nil {
				return false, m.pass(err, s, n)
			}
		} else if s.ruby() {
			if items, err = m.rbItems(over); err != nil {
				return false, m.pass(err, s, n)
			}
		} else if items, err = m.items(over, s); err != nil {
			return false, m.pass(err, s, n)
		}
		target, kind := n.Kids[0], ""
		if target.Is(code.Bind) {
			target, kind = target.Kid(0), "let"
		}
		for _, x := range items {
			in := s
			if s.braced() {
				in = s.inner()
			}
			if err := m.assign(target, x, in, kind); err != nil {
				return false, err
			}
			if done, err := turn(in); done {
				return broke, err
			}
		}
		return false, nil
	case len(n.Kids) == 2:
		for {
			yes, open, err := test(n.Kids[0], s)
			if open != nil {
				return false, m.pass(open, s, n.Kids[1])
			}
			if err != nil || !yes {
				return false, err
			}
			if done, err := turn(s); done {
				return broke, err
			}
		}
	}
	return false, giveUp("a loop that is not followed")
}

// expression runs what may be a declaration or an expression.
func (m *machine) expression(n *code.Node, s *scope) (any, error) {
	switch n.Kind {
	case code.Bind:
		return nil, m.bind(n, s)
	case code.Block:
		return nil, m.block(n.Kids, s)
	case code.ExprStmt:
		_, err := m.statement(n, s)
		return nil, err
	}
	return m.eval(n, s)
}

// tried runs what stands in a try; the resources of one of Java are closed behind it (Java SE
// 21, 14.20.3).
func (m *machine) tried(n *code.Node, s *scope) error {
	src := s.module.file.Src
	if !s.java() || !n.Is(code.Block) || int(n.Off) >= len(src) || src[n.Off] != '(' || len(n.Kids) < 2 {
		_, err := m.statement(n, s)
		return err
	}
	in := s.inner()
	var held []*cell
	var err error
	for i, k := range n.Kids {
		if err = func() error { _, err := m.statement(k, in); return err }(); err != nil {
			break
		}
		if i+1 < len(n.Kids) && k.Is(code.Bind) && k.Kid(0).Is(code.Name) {
			if c := in.vars[k.Kid(0).Name]; c != nil {
				held = append(held, c)
			}
		}
	}
	if _, stopped := err.(*stop); stopped {
		return err
	} else if x, ok := err.(*exit); ok {
		return x
	}
	for _, c := range slices.Backward(held) {
		o, ok := c.v.(*object)
		if !ok || o.class == nil || o.class.builtin || len(jvMethods(o.class, "close", false)) == 0 {
			continue
		}
		if _, bad := m.jvSend(o, "close", nil, in, spot{s.module.file, n}); bad != nil && err == nil {
			err = bad
		}
	}
	return err
}

func (m *machine) try(n *code.Node, s *scope) error {
	m.trying++
	err := m.tried(n.Kid(0), s)
	m.trying--
	t, failed := err.(*thrown)
	handled := false
	var finally *code.Node
	for _, k := range n.Kids[1:] {
		switch {
		case k.Name == "finally":
			finally = k
		case k.Name == "else" && err == nil && !handled:
			_, err = m.statement(k, s)
		case k.Name == "catch" && failed:
			what, name, _ := strings.Cut(k.Alias, ":")
			if s.php() {
				if takes, ok := caughtBy(what, t, phErrors, '\\'); !ok {
					return undecided("whether %s is caught", t.String())
				} else if !takes {
					continue
				}
			}
			if s.java() {
				if takes, ok := caughtBy(what, t, jvErrors, '.'); !ok {
					return undecided("whether %s is caught", t.String())
				} else if !takes {
					continue
				}
			}
			if s.python() {
				if takes, ok := m.catches(what, t, s); !ok {
					return undecided("whether %s is caught", t.String())
				} else if !takes {
					continue
				}
			}
			in := s
			if s.braced() {
				in = s.inner()
			}
			in.declare("\x00caught", t.v)
			if name != "" && s.php() {
				phSet(s, name, t.v)
			} else if name != "" {
				m.assignName(name, t.v, in, map[bool]string{true: "", false: "let"}[s.python()])
			}
			failed, handled = false, true
			_, err = m.statement(k, in)
		}
	}
	if x, ok := err.(*exit); ok && x.stays { // it goes on serving: what stands behind is not reached
		return err
	}
	if finally != nil {
		if _, e := m.statement(finally, s); e != nil {
			return e
		}
	}
	return err
}

// caughtBy reports whether a handler of PHP or Java with these classes takes an
// error, by the classes that the language's own come from and by what stands
// between the parts of a name; ok is false where it is not known.
func caughtBy(what string, t *thrown, parents map[string]string, between byte) (takes, ok bool) {
	o, isObject := t.v.(*object)
	if !isObject || o.class == nil {
		return false, false
	}
	last := func(name string) string { return name[strings.LastIndexByte(name, between)+1:] }
	var line []string
	add := func(name string) {
		for name = last(name); name != ""; name = parents[name] {
			line = append(line, name)
		}
	}
	for _, c := range o.class.line() {
		add(c.name)
		for _, b := range c.bases {
			if b, ok := b.(*opaque); ok {
				add(b.path)
			}
		}
	}
	for _, name := range strings.Split(what, ",") {
		if slices.Contains(line, last(name)) {
			return true, true
		}
	}
	return false, slices.Contains(line, "Throwable")
}

// catches reports whether an except with these classes takes an error; ok is
// false where it is not known.
func (m *machine) catches(what string, t *thrown, s *scope) (takes, ok bool) {
	if what == "" {
		return true, true
	}
	o, isObject := t.v.(*object)
	for _, name := range strings.Split(what, ",") {
		name = name[strings.LastIndexByte(name, '.')+1:]
		if name == "Exception" || name == "BaseException" {
			return true, true
		}
		if !isObject {
			return false, false
		}
		for _, c := range o.class.line() {
			if comesFrom(c.name, name) {
				return true, true
			}
			for _, b := range c.bases {
				if b, ok := b.(*opaque); ok && comesFrom(b.path, name) {
					return true, true
				}
			}
		}
	}
	return false, true
}

// comesFrom reports whether an error of Python is one of a class.
func comesFrom(name, class string) bool {
	if class == "IOError" || class == "EnvironmentError" { // other names of it
		class = "OSError"
	}
	for ; name != ""; name = parents[name] {
		if name == class {
			return true
		}
	}
	return false
}

// parents are the classes that errors of Python come from (Python 3.14,
// "Built-in Exceptions").
var parents = map[string]string{"KeyError": "LookupError", "IndexError": "LookupError", "UnicodeError": "ValueError", "UnicodeDecodeError": "UnicodeError", "UnicodeEncodeError": "UnicodeError", "JSONDecodeError": "ValueError",
	"FileNotFoundError": "OSError", "FileExistsError": "OSError", "IsADirectoryError": "OSError", "NotADirectoryError": "OSError", "PermissionError": "OSError", "InterruptedError": "OSError", "ProcessLookupError": "OSError", "ChildProcessError": "OSError", "BlockingIOError": "OSError", "TimeoutError": "OSError", "ConnectionError": "OSError",
	"BrokenPipeError": "ConnectionError", "ConnectionAbortedError": "ConnectionError", "ConnectionRefusedError": "ConnectionError", "ConnectionResetError": "ConnectionError",
	"ValidationError": "ValueError", "SettingsError": "ValueError", "ModuleNotFoundError": "ImportError", "ZeroDivisionError": "ArithmeticError", "OverflowError": "ArithmeticError", "FloatingPointError": "ArithmeticError",
	"OSError": "Exception", "ValueError": "Exception", "LookupError": "Exception", "ArithmeticError": "Exception", "RuntimeError": "Exception", "TypeError": "Exception", "AttributeError": "Exception", "NameError": "Exception", "ImportError": "Exception", "SyntaxError": "Exception", "AssertionError": "Exception", "EOFError": "Exception", "BufferError": "Exception", "MemoryError": "Exception",
	"UnboundLocalError": "NameError", "NotImplementedError": "RuntimeError", "RecursionError": "RuntimeError", "IndentationError": "SyntaxError", "TabError": "IndentationError"}

// with runs a block of Python with what it opens.
func (m *machine) with(n *code.Node, s *scope) error {
	if !s.python() {
		return giveUp("a with of JavaScript")
	}
	var exits []func(failed *thrown) (bool, error)
	for _, k := range n.Kids[:len(n.Kids)-1] {
		e, target := k, (*code.Node)(nil)
		if k.Is(code.Bind) {
			target, e = k.Kid(0), k.Kid(1)
		}
		v, err := m.eval(e, s)
		if err != nil {
			return err
		}
		if o, ok := v.(*object); ok && o.class != nil {
			leaving, entering := m.method(o, "__exit__"), m.method(o, "__enter__")
			if m.method(o, "__aenter__") != nil { // of an async with
				leaving, entering = m.method(o, "__aexit__"), m.method(o, "__aenter__")
			}
			if f := leaving; f != nil {
				exits = append(exits, func(failed *thrown) (bool, error) {
					args := []any{nil, nil, nil}
					if failed != nil {
						args = []any{dontKnow("an error"), failed.v, dontKnow("where an error is from")}
					}
					v, err := m.call(f, o, args, nil, spot{s.module.file, e})
					if err == nil {
						v, err = awaited(v)
					}
					if err != nil || failed == nil {
						return false, err
					}
					return m.decide(v, s, e)
				})
			}
			if f := entering; f != nil {
				if v, err = m.call(f, o, nil, nil, spot{s.module.file, e}); err == nil {
					v, err = awaited(v)
				}
				if err != nil {
					return err
				}
			}
		}
		if l, ok := v.(*list); ok && l.gen {
			v = first(l.items)
		}
		if target != nil {
			if err := m.assign(target, v, s, ""); err != nil {
				return err
			}
		}
	}
	_, err := m.statement(n.Kids[len(n.Kids)-1], s)
	for _, exit := range slices.Backward(exits) {
		failed, isError := err.(*thrown)
		if _, left := err.(*leave); err != nil && !isError && !left {
			return err
		}
		quiet, problem := exit(failed)
		if problem != nil {
			return problem
		}
		if quiet {
			err = nil
		}
	}
	if m.staysLater && err == nil {
		return &exit{stays: true}
	}
	return err
}

func (m *machine) switched(n *code.Node, s *scope) error {
	subject := any(true)
	var err error
	if n.Kid(0) != nil {
		if subject, err = m.eval(n.Kids[0], s); err != nil {
			return err
		}
	}
	in := s
	if !s.python() {
		in = s.inner()
	}
	which := -1 // the case that is taken: what stands last is what no other takes
	for i, c := range n.Kids[1:] {
		if len(c.Kids) == 1 {
			if which < 0 {
				which = i
			}
			if s.python() {
				break
			}
			continue
		}
		takes := false
		for _, t := range c.Kids[1:] {
			if t.Is(code.Unknown) {
				if takes, err = m.pyCase(t, subject, s); err != nil {
					return err
				}
				continue
			}
			v, err := m.eval(t, in)
			if err != nil {
				return err
			}
			same, done := false, false
			if s.python() {
				if same, done, err = m.pyEqual(subject, v, s, t); err != nil {
					return err
				}
			}
			ok := true
			if !done {
				same, ok = equals(subject, v, true)
			}
			if !ok {
				return m.pass(undecided("a case that is not known"), in, n)
			}
			if takes = same; takes {
				break
			}
		}
		if takes {
			which = i
			break
		}
	}
	if which < 0 {
		return nil
	}
	for _, c := range n.Kids[1+which:] {
		if c.Alias != "" {
			m.assignName(c.Alias, subject, s, "")
		}
		err := m.block(c.Kid(0).Kids, in)
		if l, ok := err.(*leave); ok && l.kind == "break" && l.label == "" {
			return nil
		}
		if err != nil {
			return err
		}
		if s.python() {
			return nil
		}
	}
	return nil
}

func (m *machine) export(n *code.Node, s *scope) error {
	ex := s.module.exports
	switch {
	case n.Name == "default" || n.Name == "=":
		k := n.Kid(0)
		v := any(nil)
		var err error
		switch {
		case k.Is(code.Func) && k.Name != "" && s.vars[k.Name] != nil:
			v = s.vars[k.Name].v
		case k.Is(code.Class) && k.Name != "":
			if _, err := m.statement(k, s); err != nil {
				return err
			}
			v = s.vars[k.Name].v
		default:
			if v, err = m.eval(k, s); err != nil {
				return err
			}
		}
		if n.Name == "=" {
			s.module.whole = v
			return nil
		}
		ex.set("default", v)
		return nil
	}
	for _, k := range n.Kids {
		if k.Is(code.ImportName) {
			c := s.find(k.Name)
			if c == nil {
				c = &cell{v: undefined}
				s.module.top.vars[k.Name] = c
			}
			ex.link(k.Alias, c)
		}
	}
	return nil
}
