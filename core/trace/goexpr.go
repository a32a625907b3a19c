package trace

import (
	"go/ast"
	"go/constant"
	"go/token"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
)

// goPanic is a panic that goes up.
type goPanic struct {
	v    goValue
	slip bool // of the language: sooner one of this package
}

func (p *goPanic) Error() string { return goPlain(p.v) }

// goPlain is a short text of a value, for messages.
func goPlain(v goValue) string {
	switch x := v.v.(type) {
	case *goFault:
		return x.msg
	case string:
		return x
	case *goCell:
		return goPlain(x.v)
	case integer, float64, bool:
		return show(x)
	}
	return v.t.String()
}

func slip(msg string) error {
	return &goPanic{goValue{&goFault{msg: "runtime error: " + msg}, tFault}, true}
}

// broken is an error of the language of what this package knows all about.
func broken(msg string) error {
	return &goPanic{goValue{&goFault{msg: "runtime error: " + msg}, tFault}, false}
}

// goWant evaluates an expression whose value becomes one of a type.
func (m *machine) goWant(e ast.Expr, t *goType, s *goScope) (goValue, error) {
	v, err := m.goEval(e, s)
	if err != nil {
		return v, err
	}
	return m.goFit(v, t, s)
}

// goEval evaluates an expression that gives one value.
func (m *machine) goEval(e ast.Expr, s *goScope) (goValue, error) {
	if err := m.step(); err != nil {
		return goValue{}, err
	}
	if m.depth++; m.depth > maxDepth*10 {
		m.depth--
		return goValue{}, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch e := e.(type) {
	case *ast.ParenExpr:
		return m.goEval(e.X, s)
	case *ast.BasicLit:
		return goConstant(e)
	case *ast.Ident:
		return m.goName(e, s)
	case *ast.FuncLit:
		return goValue{&goClosure{decl: e.Type, body: e.Body, scope: s, node: e}, nil}, nil
	case *ast.CompositeLit:
		var t *goType
		if e.Type != nil {
			var err error
			if t, err = m.goTypeOf(e.Type, s); err != nil {
				return goValue{}, err
			}
		}
		return m.goLiteral(e, t, s)
	case *ast.SelectorExpr:
		v, _, err := m.goSelector(e, s)
		return v, err
	case *ast.IndexExpr:
		v, _, err := m.goIndex(e, s)
		return v, err
	case *ast.SliceExpr:
		return m.goPart(e, s)
	case *ast.StarExpr:
		v, err := m.goEval(e.X, s)
		if err != nil {
			return v, err
		}
		switch x := v.v.(type) {
		case *goCell:
			err := m.goReady(x)
			return x.v, err
		case nil:
			return v, slip("invalid memory address or nil pointer dereference")
		case *goTypeValue:
			return goValue{&goTypeValue{pointerTo(x.t)}, nil}, nil
		}
		return v, nil // something from outside
	case *ast.UnaryExpr:
		return m.goUnary(e, s)
	case *ast.BinaryExpr:
		return m.goBinary(e, s)
	case *ast.CallExpr:
		list, err := m.goCallExpr(e, s)
		if err != nil {
			return goValue{}, err
		}
		if len(list) == 0 {
			return goValue{nil, nil}, nil
		}
		return list[0], nil
	case *ast.TypeAssertExpr:
		list, err := m.goAssert(e, s, false)
		if err != nil {
			return goValue{}, err
		}
		return list[0], nil
	case *ast.IndexListExpr, *ast.ArrayType, *ast.MapType, *ast.ChanType, *ast.FuncType, *ast.InterfaceType, *ast.StructType:
		if x, ok := e.(*ast.IndexListExpr); ok {
			if v, err := m.goEval(x.X, s); err == nil {
				if f, ok := v.v.(*goClosure); ok {
					return m.goWith(f, x.Indices, s)
				}
			}
		}
		t, err := m.goTypeOf(e, s)
		return goValue{&goTypeValue{t}, nil}, err
	}
	return goValue{}, giveUp("code that is not followed")
}

func goConstant(e *ast.BasicLit) (goValue, error) {
	switch e.Kind {
	case token.STRING:
		t, err := strconv.Unquote(e.Value)
		if err != nil {
			return goValue{}, giveUp("a text that is not understood")
		}
		return goValue{t, tUntyped}, nil
	case token.CHAR:
		c := constant.MakeFromLiteral(e.Value, token.CHAR, 0)
		n, _ := constant.Int64Val(constant.ToInt(c))
		return goValue{integer(n), tRuneConstant}, nil
	case token.INT:
		c := constant.MakeFromLiteral(e.Value, token.INT, 0)
		if n, exact := constant.Int64Val(c); exact {
			return goValue{integer(n), tUntyped}, nil
		}
		f, _ := constant.Float64Val(c)
		return goValue{f, tUntyped}, nil
	case token.FLOAT:
		f, _ := constant.Float64Val(constant.MakeFromLiteral(e.Value, token.FLOAT, 0))
		return goValue{f, tUntyped}, nil
	}
	return goValue{}, giveUp("a number that is not understood")
}

func (m *machine) goName(e *ast.Ident, s *goScope) (goValue, error) {
	if c := s.find(e.Name); c != nil {
		if err := m.goReady(c); err != nil {
			return goValue{}, err
		}
		return c.v, nil
	}
	switch e.Name {
	case "true", "false":
		return goValue{e.Name == "true", tUntyped}, nil
	case "nil":
		return goValue{nil, tUntyped}, nil
	case "iota":
		return goValue{integer(s.frame.iota), tUntyped}, nil
	}
	if t, err := m.namedType(e.Name, s); t != nil || err != nil {
		return goValue{&goTypeValue{t}, nil}, err
	}
	return goValue{m.package1(e.Name), nil}, nil // a built-in function
}

var goBuiltins = map[string]bool{"append": true, "cap": true, "clear": true, "close": true, "copy": true, "delete": true, "len": true, "make": true, "max": true, "min": true, "new": true, "panic": true, "print": true, "println": true, "recover": true}

// goSelector is x.y: something of a package, a field, a method; with the variable
// that it is, where it is one.
func (m *machine) goSelector(e *ast.SelectorExpr, s *goScope) (goValue, *goCell, error) {
	var base goValue
	var cell *goCell
	if x, ok := e.X.(*ast.Ident); ok {
		if c := s.find(x.Name); c != nil {
			if p, ok := c.v.v.(*goPackage); ok {
				if v := p.scope.vars[e.Sel.Name]; v != nil {
					err := m.goReady(v)
					return v.v, v, err
				}
				t, err := m.packageType(p, e.Sel.Name, nil)
				if err == nil && t == nil {
					err = giveUp("%s.%s", x.Name, e.Sel.Name)
				}
				return goValue{&goTypeValue{t}, nil}, nil, err
			}
		}
	}
	var err error
	if base, cell, err = m.goRef(e.X, s); err != nil {
		return goValue{}, nil, err
	}
	return m.goMember(base, cell, e.Sel.Name, s, e)
}

// goMember is a field or a method of a value, its own or one of what is embedded.
func (m *machine) goMember(base goValue, cell *goCell, name string, s *goScope, e ast.Node) (goValue, *goCell, error) {
	if of, ok := base.v.(*goTypeValue); ok { // T.method
		return m.goMethodOf(of.t, name)
	}
	type place struct {
		v goValue
		c *goCell
	}
	level := []place{{base, cell}}
	var outside []place
	for depth := 0; len(level) > 0 && depth < 12; depth++ {
		var next []place
		for _, p := range level {
			v, c := p.v, p.c
			if f := m.goFound(v, c, name); f != nil {
				return goValue{f, nil}, nil, nil
			}
			if ptr, ok := v.v.(*goCell); ok {
				if err := m.goReady(ptr); err != nil {
					return goValue{}, nil, err
				}
				v, c = ptr.v, ptr
				if f := m.goFound(v, c, name); f != nil {
					return goValue{f, nil}, nil, nil
				}
			}
			switch x := v.v.(type) {
			case *goRecord:
				u := v.t.under()
				if u == nil || len(u.fields) != len(x.fields) {
					return goValue{}, nil, undecided("a structure that is not known")
				}
				for i, f := range u.fields {
					if f.name == name {
						return x.fields[i].v, x.fields[i], nil
					}
				}
				for i, f := range u.fields {
					if f.embedded {
						next = append(next, place{x.fields[i].v, x.fields[i]})
					}
				}
			case *opaque, *object:
				outside = append(outside, place{v, c})
			case *goFault:
				if v, ok := goFaultMethod(x, name); ok {
					return v, nil, nil
				}
			case *content: // a file that is open
				return goValue{&goClosure{name: name, native: func(*machine, []goValue, spot) ([]goValue, error) {
					if name != "Close" {
						return nil, giveUp("%s of a file", name)
					}
					return []goValue{{nil, nil}}, nil
				}}, nil}, nil, nil
			case *goContext:
				if name == "Value" {
					return goValue{&goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
						if len(args) == 1 {
							if same, ok := m.goSame(x.k, args[0], nil); ok && same {
								return []goValue{x.v}, nil
							}
							if up, ok := x.up.v.(*goContext); ok {
								f, _, err := m.goMember(goValue{up, nil}, nil, name, nil, nil)
								if err != nil {
									return nil, err
								}
								return m.goApply(f, args, at, nil)
							}
						}
						return []goValue{{nil, nil}}, nil
					}}, nil}, nil, nil
				}
				outside = append(outside, place{goValue{x.opaque, nil}, nil})
			case *goFlagged:
				v, err := m.goFlagMember(x, name, s)
				return v, nil, err
			case *kongContext:
				return goValue{&goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
					return m.kongMethod(x, name, args, at, s)
				}}, nil}, nil, nil
			case *goReflected:
				return goValue{&goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
					return m.goReflect(x, name, args, at)
				}}, nil}, nil, nil
			}
		}
		level = next
	}
	if len(outside) > 0 {
		switch x := outside[0].v.v.(type) {
		case *opaque:
			if v, ok := goConstants[x.path+"."+name]; ok {
				return v, nil, nil
			}
			v, err := m.opaqueKey(x, name)
			return m.goFrom(v), nil, err
		case *object:
			if c := x.cells[name]; c != nil && !(x.class != nil && x.class.name == "url" && (name == "Port" || name == "Hostname" || name == "String")) {
				return m.goFrom(c.v), nil, nil
			}
			if x.dict || x.class == nil {
				return goValue{}, nil, giveUp("the field %s", name)
			}
			return goValue{&opaque{path: x.class.name + "." + name, self: x}, nil}, nil, nil
		}
	}
	if base.v == nil {
		return goValue{}, nil, slip("invalid memory address or nil pointer dereference")
	}
	if base.t == tLength {
		return goValue{goDuration(base, name), nil}, nil, nil
	}
	if f := goAddress(base, name); f != nil {
		return goValue{f, nil}, nil, nil
	}
	return goValue{}, nil, giveUp("%s of %s", name, base.t.String())
}

// goFound is a method that the type of a value has itself, bound to it.
func (m *machine) goFound(v goValue, c *goCell, name string) *goClosure {
	t, pointer := v.t, false
	if t != nil && t.kind == goPointer && t.name == "" {
		t, pointer = t.elem, true
	}
	if t == nil || t.pkg == nil || t.name == "" {
		return nil
	}
	of := t.name
	if t.generic != "" {
		of = t.generic
	}
	f := t.pkg.methods[of][name]
	if f == nil {
		return nil
	}
	w := *f
	w.home = t
	if wantsPointer(f) {
		switch {
		case pointer:
			w.recv = &goValue{v.v, v.t}
		case c != nil:
			w.recv = &goValue{c, pointerTo(t)}
		default:
			w.recv = &goValue{&goCell{v: v, t: t}, pointerTo(t)}
		}
		return &w
	}
	if pointer {
		if p, ok := v.v.(*goCell); ok {
			v = p.v
		}
	}
	v = goCopy(v)
	w.recv = &v
	return &w
}

func wantsPointer(f *goClosure) bool {
	if f.recvOf == nil || len(f.recvOf.List) == 0 {
		return false
	}
	_, ok := f.recvOf.List[0].Type.(*ast.StarExpr)
	return ok
}

// goMethodOf is a method as a function whose first parameter is what it belongs to.
func (m *machine) goMethodOf(t *goType, name string) (goValue, *goCell, error) {
	if t.is(goOutside) {
		return goValue{m.package1(t.name + "." + name), nil}, nil, nil
	}
	return goValue{&goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
		if len(args) == 0 {
			return nil, giveUp("a method of nothing")
		}
		f, _, err := m.goMember(args[0], nil, name, nil, nil)
		if err != nil {
			return nil, err
		}
		return m.goApply(f, args[1:], at, nil)
	}}, nil}, nil, nil
}

// goRef is the value of an expression, and the variable that it names; nil where it
// names none.
func (m *machine) goRef(e ast.Expr, s *goScope) (goValue, *goCell, error) {
	switch e := e.(type) {
	case *ast.ParenExpr:
		return m.goRef(e.X, s)
	case *ast.Ident:
		if c := s.find(e.Name); c != nil {
			err := m.goReady(c)
			return c.v, c, err
		}
	case *ast.StarExpr:
		v, err := m.goEval(e.X, s)
		if err != nil {
			return v, nil, err
		}
		switch c := v.v.(type) {
		case *goCell:
			err := m.goReady(c)
			return c.v, c, err
		case nil:
			return v, nil, slip("invalid memory address or nil pointer dereference")
		}
		return v, nil, nil
	case *ast.SelectorExpr:
		return m.goSelector(e, s)
	case *ast.IndexExpr:
		return m.goIndex(e, s)
	}
	v, err := m.goEval(e, s)
	return v, nil, err
}

// goIndex is an element, and the variable that it is in a list; or a function with
// its types.
func (m *machine) goIndex(e *ast.IndexExpr, s *goScope) (goValue, *goCell, error) {
	base, _, err := m.goRef(e.X, s)
	if err != nil {
		return goValue{}, nil, err
	}
	switch f := base.v.(type) {
	case *goClosure:
		v, err := m.goWith(f, []ast.Expr{e.Index}, s)
		return v, nil, err
	case *goTypeValue:
		t, err := m.goTypeOf(e, s)
		return goValue{&goTypeValue{t}, nil}, nil, err
	case *goCell: // a pointer to an array
		base = f.v
	}
	k, err := m.goEval(e.Index, s)
	if err != nil {
		return goValue{}, nil, err
	}
	var a []*goCell
	switch x := base.v.(type) {
	case *goList:
		a = x.a
	case *goRow:
		a = x.a
	default:
		v, _, err := m.goEntryOf(base, k, s)
		return v, nil, err
	}
	i, ok := k.v.(integer)
	if !ok {
		return goValue{}, nil, undecided("an element chosen by what is not known")
	}
	if i < 0 || int(i) >= len(a) {
		return goValue{}, nil, broken("index out of range [" + show(i) + "] with length " + strconv.Itoa(len(a)))
	}
	return a[i].v, a[i], nil
}

// goEntryOf is an entry of a map or a text, and whether it is there.
func (m *machine) goEntryOf(base, k goValue, s *goScope) (goValue, bool, error) {
	if o, ok := k.v.(*opaque); ok {
		return goValue{dontKnow("an element chosen by " + o.String()), nil}, true, nil
	}
	if k.v == nil && k.t == nil {
		if _, ok := base.v.(*goTable); !ok {
			return goValue{}, false, undecided("an element of what is not known")
		}
	}
	switch x := base.v.(type) {
	case *goTable:
		key, ok := goKey(k)
		if !ok {
			return goValue{}, false, undecided("a key that is not known")
		}
		if c := x.m[key]; c != nil {
			return c.c.v, true, nil
		}
	case string:
		i, ok := k.v.(integer)
		if !ok {
			return goValue{}, false, undecided("an element chosen by what is not known")
		}
		if i < 0 || int(i) >= len(x) {
			return goValue{}, false, broken("index out of range [" + show(i) + "] with length " + strconv.Itoa(len(x)))
		}
		return goValue{integer(x[i]), tByte}, true, nil
	case nil:
		if !base.t.is(goMap) {
			return goValue{}, false, slip("index out of range")
		}
	case *opaque:
		if x.path != "" {
			return goValue{&opaque{path: x.path + "[]", recv: x}, nil}, true, nil
		}
		return base, true, nil
	default:
		return goValue{}, false, undecided("an element of what is not known")
	}
	var elem *goType
	if u := base.t.under(); u != nil {
		elem = u.elem
	}
	v, err := m.goZero(elem, s)
	return v, false, err
}

// goKey is a value as a key of a map.
func goKey(v goValue) (any, bool) {
	switch x := v.v.(type) {
	case string, integer, float64, bool, nil, *goCell:
		return x, true
	case *goRecord:
		var b strings.Builder
		for _, c := range x.fields {
			k, ok := goKey(c.v)
			if !ok {
				return nil, false
			}
			b.WriteString(strconv.Quote(show(k)))
		}
		return b.String(), true
	case *goFault:
		return x, true
	}
	return nil, false
}

func newTable() *goTable { return &goTable{m: map[any]*goEntry{}} }

func (t *goTable) set(k, v goValue, elem *goType) bool {
	key, ok := goKey(k)
	if !ok {
		return false
	}
	if e := t.m[key]; e != nil {
		e.c.v = v
		return true
	}
	t.keys = append(t.keys, key)
	t.m[key] = &goEntry{k, &goCell{v: v, t: elem}}
	return true
}

func (t *goTable) remove(k goValue) {
	if key, ok := goKey(k); ok && t.m[key] != nil {
		delete(t.m, key)
		t.keys = slices.DeleteFunc(t.keys, func(x any) bool { return x == key })
	}
}

// goPart is x[a:b:c].
func (m *machine) goPart(e *ast.SliceExpr, s *goScope) (goValue, error) {
	base, err := m.goEval(e.X, s)
	if err != nil {
		return goValue{}, err
	}
	if p, ok := base.v.(*goCell); ok {
		base = p.v
	}
	ends := [3]int{0, -1, -1}
	for i, x := range []ast.Expr{e.Low, e.High, e.Max} {
		if x == nil {
			continue
		}
		v, err := m.goEval(x, s)
		if err != nil {
			return goValue{}, err
		}
		n, ok := v.v.(integer)
		if !ok {
			return goValue{dontKnow("a part that is not known"), nil}, nil
		}
		ends[i] = int(n)
	}
	check := func(size, limit int) error {
		if ends[1] < 0 {
			ends[1] = size
		}
		if ends[2] < 0 {
			ends[2] = limit
		}
		if ends[0] < 0 || ends[0] > ends[1] || ends[1] > ends[2] || ends[2] > limit {
			return broken("slice bounds out of range")
		}
		return nil
	}
	switch x := base.v.(type) {
	case string:
		if err := check(len(x), len(x)); err != nil {
			return goValue{}, err
		}
		return goValue{x[ends[0]:ends[1]], base.t}, nil
	case *content:
		if err := check(len(x.text), len(x.text)); err != nil {
			return goValue{}, err
		}
		return goValue{x.text[ends[0]:ends[1]], base.t}, nil
	case *goList:
		if err := check(len(x.a), cap(x.a)); err != nil {
			return goValue{}, err
		}
		return goValue{&goList{x.a[ends[0]:ends[1]:ends[2]]}, base.t}, nil
	case *goRow:
		if err := check(len(x.a), len(x.a)); err != nil {
			return goValue{}, err
		}
		return goValue{&goList{x.a[ends[0]:ends[1]:ends[2]]}, &goType{kind: goSlice, elem: base.t.under().elem}}, nil
	case nil:
		if err := check(0, 0); err != nil {
			return goValue{}, err
		}
		return base, nil
	}
	return goValue{dontKnow("a part of what is not known"), nil}, nil
}

func (m *machine) goUnary(e *ast.UnaryExpr, s *goScope) (goValue, error) {
	switch e.Op {
	case token.AND:
		if lit, ok := ast.Unparen(e.X).(*ast.CompositeLit); ok {
			v, err := m.goEval(lit, s)
			if err != nil {
				return v, err
			}
			if _, ok := v.v.(*object); ok { // what stands outside is the same either way
				return goValue{v.v, pointerTo(v.t)}, nil
			}
			return goValue{&goCell{v: v, t: v.t}, pointerTo(v.t)}, nil
		}
		v, c, err := m.goRef(e.X, s)
		if err != nil || c == nil {
			return v, err
		}
		if o, ok := c.v.v.(*object); ok {
			return goValue{o, pointerTo(c.v.t)}, nil
		}
		t := c.t
		if t == nil {
			t = c.v.t
		}
		return goValue{c, pointerTo(t)}, nil
	case token.ARROW:
		list, err := m.goReceive(e, s)
		if err != nil {
			return goValue{}, err
		}
		return list[0], nil
	}
	v, err := m.goEval(e.X, s)
	if err != nil {
		return v, err
	}
	if o, ok := v.v.(*opaque); ok {
		return goValue{dontKnow("what is made of " + o.String()), v.t}, nil
	}
	switch x := v.v.(type) {
	case bool:
		if e.Op == token.NOT {
			return goValue{!x, v.t}, nil
		}
	case integer:
		switch e.Op {
		case token.SUB:
			return goValue{wrapped(-x, v.t), v.t}, nil
		case token.ADD:
			return v, nil
		case token.XOR:
			return goValue{wrapped(^x, v.t), v.t}, nil
		}
	case float64:
		switch e.Op {
		case token.SUB:
			return goValue{-x, v.t}, nil
		case token.ADD:
			return v, nil
		}
	}
	return goValue{}, giveUp("what %s gives", e.Op)
}

// goReceive takes something from a channel; one that is empty is waited for.
func (m *machine) goReceive(e *ast.UnaryExpr, s *goScope) ([]goValue, error) {
	v, err := m.goEval(e.X, s)
	if err != nil {
		return nil, err
	}
	switch c := v.v.(type) {
	case *goQueue:
		if len(c.q) > 0 {
			x := c.q[0]
			c.q = c.q[1:]
			return []goValue{x, {true, tBool}}, nil
		}
		if c.closed {
			var elem *goType
			if u := v.t.under(); u != nil {
				elem = u.elem
			}
			z, err := m.goZero(elem, s)
			return []goValue{z, {false, tBool}}, err
		}
	case *opaque:
		if strings.HasPrefix(c.path, "time.") {
			return []goValue{{dontKnow("a time"), nil}, {true, tBool}}, nil
		}
	}
	return nil, &exit{stays: true}
}

func (m *machine) goBinary(e *ast.BinaryExpr, s *goScope) (goValue, error) {
	a, err := m.goEval(e.X, s)
	if err != nil {
		return a, err
	}
	if e.Op == token.LAND || e.Op == token.LOR {
		yes, err := m.goHolds(a, e.X)
		if err != nil {
			x := goAside{m: m, s: s, own: map[string]bool{}}
			if x.expr(e.Y); !opens(err) || x.fails || x.ends {
				return a, err
			}
			return goValue{dontKnow(err.Error()), tBool}, nil
		}
		if yes == (e.Op == token.LOR) {
			return a, nil
		}
		return m.goEval(e.Y, s)
	}
	b, err := m.goEval(e.Y, s)
	if err != nil {
		return b, err
	}
	return m.goOperate(e.Op, a, b, e, s)
}

// goHolds says whether a condition holds.
func (m *machine) goHolds(v goValue, e ast.Expr) (bool, error) {
	if yes, ok := v.v.(bool); ok {
		return yes, nil
	}
	if o, ok := v.v.(*opaque); ok {
		return false, undecided("a condition that is not known: %s", o.String())
	}
	return false, undecided("a condition that is not known")
}

func (m *machine) goOperate(op token.Token, a, b goValue, e *ast.BinaryExpr, s *goScope) (goValue, error) {
	untyped := func(v goValue) bool { return v.t == nil || v.t.kind == goUntyped }
	t := a.t
	if untyped(a) && !untyped(b) && op != token.SHL && op != token.SHR {
		t = b.t
	}
	if t == tRuneConstant && b.t == tUntyped {
		t = tRuneConstant
	}
	switch op {
	case token.EQL, token.NEQ:
		same, ok := m.goSame(a, b, e)
		if !ok {
			return goValue{dontKnow("whether two things are the same"), tBool}, nil
		}
		return goValue{same == (op == token.EQL), tUntyped}, nil
	}
	for _, x := range []goValue{a, b} {
		if o, ok := x.v.(*opaque); ok {
			return goValue{dontKnow("what is made of " + o.String()), t}, nil
		}
	}
	comparison := func(c int) (goValue, bool) {
		switch op {
		case token.LSS:
			return goValue{c < 0, tUntyped}, true
		case token.LEQ:
			return goValue{c <= 0, tUntyped}, true
		case token.GTR:
			return goValue{c > 0, tUntyped}, true
		case token.GEQ:
			return goValue{c >= 0, tUntyped}, true
		}
		return goValue{}, false
	}
	if x, ok := a.v.(string); ok {
		y, ok := b.v.(string)
		if !ok {
			return goValue{}, giveUp("what %s gives of a text", op)
		}
		if op == token.ADD {
			if len(x)+len(y) > maxText {
				return goValue{}, spent("a text that is too long")
			}
			return goValue{x + y, t}, m.use(len(x) + len(y))
		}
		if v, ok := comparison(strings.Compare(x, y)); ok {
			return v, nil
		}
		return goValue{}, giveUp("what %s gives of a text", op)
	}
	x, isInt := a.v.(integer)
	y, bothInt := b.v.(integer)
	if isInt && bothInt && !t.is(goFloat) {
		if v, ok := comparison(compareInts(x, y)); ok {
			return v, nil
		}
		n := integer(0)
		switch op {
		case token.ADD:
			n = x + y
		case token.SUB:
			n = x - y
		case token.MUL:
			n = x * y
		case token.QUO, token.REM:
			if y == 0 {
				return goValue{}, &goPanic{goValue{&goFault{msg: "runtime error: integer divide by zero"}, tFault}, false}
			}
			if n = x / y; op == token.REM {
				n = x % y
			}
		case token.AND:
			n = x & y
		case token.OR:
			n = x | y
		case token.XOR:
			n = x ^ y
		case token.AND_NOT:
			n = x &^ y
		case token.SHL:
			if y < 0 || y > 63 {
				return goValue{}, giveUp("a shift")
			}
			n = x << y
		case token.SHR:
			if y < 0 || y > 63 {
				return goValue{}, giveUp("a shift")
			}
			n = x >> y
		default:
			return goValue{}, giveUp("what %s gives", op)
		}
		return goValue{wrapped(n, t), t}, nil
	}
	f, ok1 := toNumber(a.v)
	g, ok2 := toNumber(b.v)
	_, boolean := a.v.(bool)
	if ok1 && ok2 && !boolean && a.v != nil && b.v != nil {
		if v, ok := comparison(compare(f, g)); ok {
			return v, nil
		}
		switch op {
		case token.ADD:
			return goValue{f + g, t}, nil
		case token.SUB:
			return goValue{f - g, t}, nil
		case token.MUL:
			return goValue{f * g, t}, nil
		case token.QUO:
			if g != 0 {
				return goValue{f / g, t}, nil
			}
		}
	}
	return goValue{}, giveUp("what %s gives", op)
}

func compareInts(a, b integer) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// goSame says whether two values are the same; ok is false where that is not known.
func (m *machine) goSame(a, b goValue, e *ast.BinaryExpr) (same, ok bool) {
	nothing := func(v goValue) bool { return v.v == nil }
	if x, isOpaque := a.v.(*opaque); isOpaque {
		if nothing(b) { // that it works is what is asked
			if e != nil && isErrorName(e.X) {
				return true, true
			}
			return false, x.certain() || goMakes(x)
		}
		y, both := b.v.(*opaque)
		if both && x.path != "" && x.path == y.path && !strings.Contains(x.path, "()") {
			return true, true
		}
		return false, false
	}
	if _, isOpaque := b.v.(*opaque); isOpaque {
		if f, ok := a.v.(*goFault); ok {
			return f.path != "" && f.path == b.v.(*opaque).path, true
		}
		return m.goSame(b, a, nil)
	}
	if nothing(a) || nothing(b) {
		return nothing(a) && nothing(b), true
	}
	if a.t != nil && b.t != nil && a.t.kind != goUntyped && b.t.kind != goUntyped && a.t.name != b.t.name {
		if x, ok := a.v.(integer); ok && (a.t.name == "" || b.t.name == "") {
			return x == b.v, true
		}
		return false, true // of two types, in interfaces
	}
	switch x := a.v.(type) {
	case *goRecord:
		y, both := b.v.(*goRecord)
		if !both {
			return false, false
		}
		return m.goSameCells(x.fields, y.fields)
	case *goRow:
		y, both := b.v.(*goRow)
		if !both {
			return false, false
		}
		return m.goSameCells(x.a, y.a)
	case integer:
		if y, ok := b.v.(float64); ok {
			return float64(x) == y, true
		}
	case float64:
		if y, ok := b.v.(integer); ok {
			return x == float64(y), true
		}
	case *goTypeValue:
		y, both := b.v.(*goTypeValue)
		return both && x.t.same(y.t), both
	}
	switch b.v.(type) {
	case bool, integer, float64, string, *goCell, *goQueue, *goFault, *object:
		return a.v == b.v, true
	}
	return false, false
}

// goSameCells compares the parts of two structures or arrays.
func (m *machine) goSameCells(a, b []*goCell) (same, ok bool) {
	if len(a) != len(b) {
		return false, true
	}
	if m.deeper() != nil {
		return false, false
	}
	defer m.higher()
	for i := range a {
		if same, ok := m.goSame(a[i].v, b[i].v, nil); !same || !ok {
			return same, ok
		}
	}
	return true, true
}

func isErrorName(e ast.Expr) bool {
	switch e := e.(type) {
	case *ast.Ident:
		return e.Name == "err" || strings.HasSuffix(e.Name, "Err") || strings.HasSuffix(e.Name, "err")
	case *ast.ParenExpr:
		return isErrorName(e.X)
	}
	return false
}

// goLiteral is a structure, a list or a map that is written out.
func (m *machine) goLiteral(e *ast.CompositeLit, t *goType, s *goScope) (goValue, error) {
	if t == nil {
		return goValue{}, undecided("a value whose type is not known")
	}
	if err := m.use(len(e.Elts)); err != nil {
		return goValue{}, err
	}
	if t.kind == goPointer && t.name == "" { // &T left out
		v, err := m.goLiteral(e, t.elem, s)
		if _, ok := v.v.(*object); ok || err != nil {
			return goValue{v.v, t}, err
		}
		return goValue{&goCell{v: v, t: t.elem}, t}, nil
	}
	part := func(x ast.Expr, pt *goType) (goValue, error) {
		if lit, ok := x.(*ast.CompositeLit); ok && lit.Type == nil {
			return m.goLiteral(lit, pt, s)
		}
		v, err := m.goWant(x, pt, s)
		return goCopy(v), err
	}
	u := t.under()
	switch u.kind {
	case goStruct:
		z, err := m.goZero(t, s)
		if err != nil {
			return z, err
		}
		r := z.v.(*goRecord)
		for i, x := range e.Elts {
			at := i
			if kv, ok := x.(*ast.KeyValueExpr); ok {
				id, _ := kv.Key.(*ast.Ident)
				at, x = -1, kv.Value
				for j, f := range u.fields {
					if id != nil && f.name == id.Name {
						at = j
					}
				}
			}
			if at < 0 || at >= len(u.fields) {
				return z, undecided("a field that is not known")
			}
			v, err := part(x, u.fields[at].t)
			if err != nil {
				return z, err
			}
			r.fields[at].v = v
		}
		return z, nil
	case goSlice, goArray:
		var a []*goCell
		size := u.size
		next := 0
		for _, x := range e.Elts {
			if kv, ok := x.(*ast.KeyValueExpr); ok {
				k, err := m.goEval(kv.Key, s)
				if err != nil {
					return goValue{}, err
				}
				n, ok := k.v.(integer)
				if !ok || n < 0 || n > maxItems {
					return goValue{}, spent("a list that is too long")
				}
				next, x = int(n), kv.Value
			}
			v, err := part(x, u.elem)
			if err != nil {
				return goValue{}, err
			}
			for len(a) <= next {
				z, err := m.goZero(u.elem, s)
				if err != nil {
					return goValue{}, err
				}
				a = append(a, &goCell{v: z, t: u.elem})
			}
			a[next].v = v
			next++
		}
		if u.kind == goSlice {
			return goValue{&goList{a}, t}, nil
		}
		if size < 0 {
			w := *t
			w.size = len(a)
			t = &w
		}
		for len(a) < size && size < maxItems {
			z, err := m.goZero(u.elem, s)
			if err != nil {
				return goValue{}, err
			}
			a = append(a, &goCell{v: z, t: u.elem})
		}
		return goValue{&goRow{a}, t}, nil
	case goMap:
		table := newTable()
		for _, x := range e.Elts {
			kv, ok := x.(*ast.KeyValueExpr)
			if !ok {
				return goValue{}, giveUp("a map that is not understood")
			}
			k, err := part(kv.Key, u.key)
			if err != nil {
				return goValue{}, err
			}
			v, err := part(kv.Value, u.elem)
			if err != nil {
				return goValue{}, err
			}
			if !table.set(k, v, u.elem) {
				return goValue{}, undecided("a key that is not known")
			}
		}
		return goValue{table, t}, nil
	case goOutside:
		o := newObject()
		o.class = &class{name: u.name, builtin: true, outside: true, statics: newObject(), methods: newObject()}
		for i, x := range e.Elts {
			name := strconv.Itoa(i)
			if kv, ok := x.(*ast.KeyValueExpr); ok {
				id, isName := kv.Key.(*ast.Ident)
				if x = kv.Value; !isName {
					continue
				}
				name = id.Name
			}
			if lit, ok := x.(*ast.CompositeLit); ok && lit.Type == nil {
				continue
			}
			v, err := m.goWant(x, nil, s)
			if err != nil {
				return goValue{}, err
			}
			o.set(name, m.goOld(v, 0))
		}
		return goValue{o, t}, nil
	}
	if len(e.Elts) == 0 { // nothing is done to make it
		return goValue{dontKnow("a value of a type that is not followed"), t}, nil
	}
	return goValue{}, giveUp("a value of a type that is not followed")
}

// goAssert is x.(T): with both set its second result says whether it is one.
func (m *machine) goAssert(e *ast.TypeAssertExpr, s *goScope, both bool) ([]goValue, error) {
	v, err := m.goEval(e.X, s)
	if err != nil {
		return nil, err
	}
	if e.Type == nil {
		return nil, giveUp("a switch of types")
	}
	t, err := m.goTypeOf(e.Type, s)
	if err != nil {
		return nil, err
	}
	is, ok := m.goIs(v, t)
	if !ok {
		if both {
			return nil, undecided("whether something is of a type")
		}
		return []goValue{v}, nil
	}
	if is {
		return []goValue{v, {true, tUntyped}}, nil
	}
	if !both {
		return nil, &goPanic{goValue{&goFault{msg: "interface conversion: interface is not " + t.String()}, tFault}, true}
	}
	z, err := m.goZero(t, s)
	return []goValue{z, {false, tUntyped}}, err
}

// goIs says whether a value in an interface is of a type; ok is false where that is
// not known.
func (m *machine) goIs(v goValue, t *goType) (is, ok bool) {
	if v.v == nil && v.t == nil {
		return false, true
	}
	if o, isOpaque := v.v.(*opaque); isOpaque {
		if v.t == nil {
			return false, false
		}
		_ = o
	}
	if t.is(goInterface) {
		u := t.under()
		if len(u.embeds) > 0 {
			return false, false
		}
		for _, name := range u.methods {
			if f, ok := v.v.(*goFault); ok {
				if _, has := goFaultMethod(f, name); has {
					continue
				}
			}
			if _, out := v.v.(*object); out {
				return false, false
			}
			f, _, err := m.goMember(v, nil, name, nil, nil)
			if err != nil {
				return false, true
			}
			c, isFunc := f.v.(*goClosure)
			if !isFunc {
				return false, false
			}
			if _, pointer := v.v.(*goCell); wantsPointer(c) && !pointer && c.home != nil && v.t != nil && c.home.same(v.t) {
				return false, true
			}
		}
		return true, true
	}
	if f, isFault := v.v.(*goFault); isFault {
		if t.name != "" && f.path != "" && strings.HasPrefix(f.path, t.name) {
			return true, true
		}
		if t.kind == goPointer && t.elem.kind == goOutside || t.kind == goOutside {
			return false, false
		}
		return false, true
	}
	if v.t == nil {
		return false, false
	}
	if v.t.kind == goUntyped {
		w, err := m.goFit(v, nil, nil)
		if err != nil || w.t == nil {
			return false, false
		}
		v = w
	}
	return v.t.same(t), true
}

// goWith is a function with the types that stand in its brackets.
func (m *machine) goWith(f *goClosure, args []ast.Expr, s *goScope) (goValue, error) {
	if f.decl == nil || f.decl.TypeParams == nil {
		return goValue{}, giveUp("a function with types")
	}
	in := f.scope.inner()
	i := 0
	for _, field := range f.decl.TypeParams.List {
		for _, n := range field.Names {
			if i < len(args) {
				t, err := m.goTypeOf(args[i], s)
				if err != nil {
					return goValue{}, err
				}
				in.typed(n.Name, t)
			}
			i++
		}
	}
	w := *f
	w.scope = in
	return goValue{&w, nil}, nil
}

// goSeveral are so many values of one expression.
func (m *machine) goSeveral(e ast.Expr, count int, s *goScope) ([]goValue, error) {
	var list []goValue
	var err error
	switch x := ast.Unparen(e).(type) {
	case *ast.CallExpr:
		list, err = m.goCallExpr(x, s)
	case *ast.TypeAssertExpr:
		return m.goAssert(x, s, true)
	case *ast.UnaryExpr:
		if x.Op == token.ARROW {
			return m.goReceive(x, s)
		}
	case *ast.IndexExpr:
		base, err := m.goEval(x.X, s)
		if err != nil {
			return nil, err
		}
		k, err := m.goEval(x.Index, s)
		if err != nil {
			return nil, err
		}
		if _, ok := base.v.(*opaque); ok {
			return nil, undecided("an element that is not known")
		}
		v, ok, err := m.goEntryOf(base, k, s)
		if o, isOpaque := v.v.(*opaque); isOpaque && err == nil && o.path == "" {
			err = undecided("an element that is not known")
		}
		return []goValue{v, {ok, tUntyped}}, err
	}
	if err != nil {
		return nil, err
	}
	for len(list) > 0 && len(list) < count { // from outside
		list = append(list, goValue{dontKnow("one of several results"), nil})
	}
	if len(list) < count {
		return nil, giveUp("several results")
	}
	return list, nil
}

// goAsk is what package value says of a call, where it gives something that is not
// known here.
func (m *machine) goAsk(v any, at spot, s *goScope) any {
	o, ok := v.(*opaque)
	if !ok || s == nil || s.frame == nil || s.frame.static == nil || !at.n.Is(code.Call) || !(o.path == "" || strings.Contains(o.path, "()")) {
		return v
	}
	if x, ok := m.ask(at.n, &scope{static: s.frame.static, module: m.modules[at.f.Name]}); ok {
		return x
	}
	return v
}
