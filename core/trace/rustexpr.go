package trace

import (
	"strconv"
	"strings"

	"ubique/core/place"
	"ubique/core/rust"
)

// rsFn calls a function of the tree.
func (m *machine) rsFn(f *rust.Fn, mod *rsModule, def *rsDef, given map[string]*rsT, this any, args []any, want *rsT, at rsAt) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if f.Body == nil {
		if f.Broken != "" {
			return nil, giveUp("the function %s, in which %s", f.Name, f.Broken)
		}
		return nil, giveUp("the function %s, which has no body", f.Name)
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	fr := &rsFrame{mod: mod, self: def, types: map[string]*rsT{}}
	names := map[string]bool{}
	for _, g := range f.Generics {
		names[g.Name] = true
	}
	for k, t := range given {
		fr.types[k] = t
	}
	for i, p := range f.Params {
		if i < len(args) {
			m.rsUnify(p.Type, rsTypeOf(args[i]), names, fr.types)
		}
	}
	m.rsUnify(f.Ret, want, names, fr.types)
	fr.ret = m.rsType(f.Ret, fr)
	if fr.ret == nil {
		fr.ret = want
	}
	s := &rsScope{vars: map[string]*rsCell{}, fr: fr}
	if f.Self {
		s.vars["self"] = &rsCell{v: this}
	}
	for i, p := range f.Params {
		if i >= len(args) {
			return nil, giveUp("a missing argument of %s", f.Name)
		}
		if ok, known := m.rsBind(p.Pat, rsTyped(args[i], m.rsType(p.Type, fr)), s, nil, false); !ok || !known {
			return nil, giveUp("an argument of %s", f.Name)
		}
	}
	run := func() (any, error) {
		v, err := m.rsEval(f.Body, s, fr.ret)
		if l, ok := err.(*rsLeave); ok && l.kind == "return" {
			v, err = l.v, nil
		}
		if err != nil {
			return nil, err
		}
		return rsTyped(v, fr.ret), nil
	}
	if f.Async {
		return &rsFuture{run: run}, nil
	}
	return run()
}

// rsCall calls a value.
func (m *machine) rsCall(f any, args []any, want *rsT, at rsAt) (any, error) {
	switch f := rsOpened(f).(type) {
	case *rsFn:
		switch {
		case f.native != nil:
			return f.native(args, want, at)
		case f.expr != nil:
			return m.rsClosure(f, args, want)
		case f.fn.Self && len(args) > 0: // Type::method
			return m.rsFn(f.fn, f.mod, f.def, f.types, args[0], args[1:], want, at)
		}
		return m.rsFn(f.fn, f.mod, f.def, f.types, nil, args, want, at)
	case *opaque:
		return m.rsOutside(f, args, at)
	}
	return nil, giveUp("a call of something that is no function")
}

func (m *machine) rsClosure(f *rsFn, args []any, want *rsT) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	s := f.scope.inner()
	if t := m.rsType(f.expr.Type, s.fr); t != nil {
		want = t
	}
	fr := *s.fr
	fr.ret = want
	s.fr = &fr
	for i, p := range f.expr.Params {
		if i >= len(args) {
			break
		}
		if ok, known := m.rsBind(p.Pat, rsTyped(args[i], m.rsType(p.Type, s.fr)), s, nil, false); !ok || !known {
			return nil, giveUp("an argument of a closure")
		}
	}
	run := func() (any, error) {
		v, err := m.rsEval(f.expr.Kids[0], s, want)
		if l, ok := err.(*rsLeave); ok && l.kind == "return" {
			return l.v, nil
		}
		return v, err
	}
	if f.expr.Text == "async" {
		return &rsFuture{run: run}, nil
	}
	return run()
}

// rsWait runs what is awaited.
func (m *machine) rsWait(v any) (any, error) {
	switch v := v.(type) {
	case *rsFuture:
		if v.ready {
			return v.v, nil
		}
		x, err := v.run()
		if err != nil {
			return nil, err
		}
		v.v, v.ready = x, true
		return x, nil
	case *rsHandle:
		if v.stays {
			return nil, &exit{stays: true}
		}
		return v.v, nil
	case *opaque:
		name := strings.TrimSuffix(v.path, "()")
		name = name[strings.LastIndexByte(name, '.')+1:]
		if rsPending[name] {
			return nil, &exit{stays: true}
		}
		if len(m.calls) > 0 && rsServing(v) {
			return nil, &exit{stays: true}
		}
		return v, nil
	case *rsData:
		if r, ok := first(values(v)).(*rsRef); ok && v.variant == "Ok" { // a lock that is waited for is had
			return r, nil
		}
	}
	return v, nil
}

// values are the fields of a structure.
func values(d *rsData) (list []any) {
	for _, c := range d.fields {
		list = append(list, c.v)
	}
	return list
}

// rsBody runs the statements of a block.
func (m *machine) rsBody(b *rust.Expr, s *rsScope, want *rsT) (any, error) {
	var items []*rust.Item
	for _, k := range b.Kids {
		if k.Kind == rust.ItemStmt {
			items = append(items, k.Item)
		}
	}
	if items != nil {
		fr := *s.fr
		fr.locals = append([][]*rust.Item{items}, fr.locals...)
		s.fr = &fr
		for _, it := range items {
			if it.Kind == rust.ImplItem {
				m.rsTakeImpl(it, fr.mod)
			}
		}
	}
	var last any
	for i, k := range b.Kids {
		if err := m.step(); err != nil {
			return nil, err
		}
		var err error
		last = nil
		switch k.Kind {
		case rust.ItemStmt:
		case rust.LetStmt:
			err = m.rsLet(k, b.Kids[i+1:], s, want, b.Tail)
		case rust.ExprStmt:
			_, err = m.rsEval(k.Kids[0], s, nil)
		default:
			var to *rsT
			if i == len(b.Kids)-1 && b.Tail {
				to = want
			}
			last, err = m.rsEval(k, s, to)
		}
		if err != nil {
			if err = m.rsStepOver(err, k, s); err != nil {
				return nil, placed(err, func() place.Span { return rsAt{s.fr.mod.file, k.Off, k.End}.span() })
			}
			last = dontKnow("what is not followed")
		}
	}
	if !b.Tail {
		last = nil
	}
	return last, nil
}

// rsStepOver goes on behind a statement that could not be followed, where it changes
// nothing that counts.
func (m *machine) rsStepOver(err error, k *rust.Expr, s *rsScope) error {
	if !opens(err) || !rsQuiet(k, 0) {
		return err
	}
	for x := k; x != nil; {
		switch x.Kind {
		case rust.LetStmt:
			m.rsBindUnknown(x.Pat, s, err.Error())
			return nil
		}
		return nil
	}
	return err
}

func (m *machine) rsBindUnknown(p *rust.Pat, s *rsScope, why string) {
	if p == nil {
		return
	}
	if p.Kind == rust.NamePat {
		s.vars[p.Name] = &rsCell{v: dontKnow(why)}
	}
	for _, k := range p.Kids {
		m.rsBindUnknown(k, s, why)
	}
	for _, f := range p.Fields {
		m.rsBindUnknown(f.Pat, s, why)
	}
}

func (m *machine) rsLet(k *rust.Expr, after []*rust.Expr, s *rsScope, ret *rsT, tail bool) error {
	want := m.rsType(k.Type, s.fr)
	if len(k.Kids) == 0 {
		if k.Pat.Kind == rust.NamePat {
			s.vars[k.Pat.Name] = &rsCell{v: dontKnow("a variable that is not set")}
		}
		return nil
	}
	if want == nil && k.Pat.Kind == rust.NamePat {
		if !tail {
			ret = nil
		}
		if want = m.rsHint(k.Pat.Name, after, s, ret); want == nil && rsWhole(k.Kids[0], 0) {
			want = &rsT{name: "i32"} // what a literal is without anything else (The Rust Reference, "Literal expressions")
		}
	}
	v, err := m.rsEval(k.Kids[0], s, want)
	if err != nil {
		return err
	}
	v = rsTyped(v, want)
	ok, known := m.rsBind(k.Pat, v, s, nil, false)
	switch {
	case !known && len(k.Kids) > 1 && !rsEnds(k.Kids[1]):
		return undecided("a pattern of what is not known")
	case ok || !known:
		if !known {
			m.rsBindUnknown(k.Pat, s, "what a pattern takes out of what is not known")
		}
		return nil
	case len(k.Kids) > 1:
		_, err := m.rsEval(k.Kids[1], s.inner(), nil)
		return err
	}
	return giveUp("a pattern that does not fit")
}

// rsHint is the type that a variable has by how it is used.
func (m *machine) rsHint(name string, after []*rust.Expr, s *rsScope, ret *rsT) (t *rsT) {
	steps := 0
	var look func(e *rust.Expr)
	isName := func(e *rust.Expr) bool {
		for e != nil && e.Kind == rust.RefExpr {
			e = e.Kids[0]
		}
		return e != nil && e.Kind == rust.PathExpr && len(e.Path) == 1 && e.Path[0] == name
	}
	params := func(list []rust.Param, args []*rust.Expr, fr *rsFrame) {
		for i, a := range args {
			if isName(a) && i < len(list) && t == nil {
				t = m.rsType(list[i].Type, fr)
			}
		}
	}
	look = func(e *rust.Expr) {
		if steps++; e == nil || t != nil || steps > 2000 {
			return
		}
		switch e.Kind {
		case rust.CallExpr:
			if of := e.Kids[0]; of.Kind == rust.PathExpr && len(of.Path) > 0 {
				en := m.rsFind(of.Path, s.fr.mod, s.fr)
				switch {
				case en.item != nil && en.item.Kind == rust.FnItem:
					if len(en.item.Fn.Generics) == 0 {
						params(en.item.Fn.Params, e.Kids[1:], &rsFrame{mod: en.mod})
					}
				case en.variant != nil:
					for i, a := range e.Kids[1:] {
						if isName(a) && i < len(en.variant.Fields) && t == nil {
							t = m.rsType(en.variant.Fields[i].Type, &rsFrame{mod: en.def.mod, self: en.def})
						}
					}
				case en.def != nil && len(en.rest) == 1 && len(en.def.methods[en.rest[0]]) == 1:
					if meth := en.def.methods[en.rest[0]][0]; meth.fn != nil {
						params(meth.fn.Params, e.Kids[1:], &rsFrame{mod: meth.mod, self: meth.def})
					}
				case en.def != nil && en.def.item.Tuple && len(en.rest) == 0:
					for i, a := range e.Kids[1:] {
						if isName(a) && i < len(en.def.item.Fields) && t == nil {
							t = m.rsType(en.def.item.Fields[i].Type, &rsFrame{mod: en.def.mod, self: en.def})
						}
					}
				case en.path != "":
					switch two := rsTwo(en.path); two {
					case "SocketAddr.new", "SocketAddrV4.new", "SocketAddrV6.new":
						if len(e.Kids) > 2 && isName(e.Kids[2]) {
							t = &rsT{name: "u16"}
						}
						if len(e.Kids) > 2 && isName(e.Kids[1]) {
							t = &rsT{name: "IpAddr"}
						}
					case "Ok", "Some":
						if len(e.Kids) == 2 && isName(e.Kids[1]) && s.fr.ret.arg(0) != nil {
							t = s.fr.ret.arg(0)
						}
					case "Ipv4Addr.from", "Ipv4Addr.new":
						if len(e.Kids) > 1 && isName(e.Kids[1]) {
							t = &rsT{name: "u8"}
						}
					}
				}
			}
		case rust.MethodExpr:
			var found []*rsMethod
			for _, d := range m.rs().defs {
				for _, meth := range d.methods[e.Text] {
					if meth.fn != nil && meth.fn.Self {
						found = append(found, meth)
					}
				}
			}
			if len(found) == 1 {
				params(found[0].fn.Params, e.Kids[1:], &rsFrame{mod: found[0].mod, self: found[0].def})
			}
			if e.Text == "set_port" && len(e.Kids) == 2 && isName(e.Kids[1]) {
				t = &rsT{name: "u16"}
			}
		case rust.StructExpr:
			for _, f := range e.Fields {
				if !isName(f.Value) || t != nil {
					continue
				}
				if en := m.rsFind(e.Path, s.fr.mod, s.fr); en.def != nil {
					fields := en.def.item.Fields
					if en.variant != nil {
						fields = en.variant.Fields
					}
					for _, x := range fields {
						if x.Name == f.Name && t == nil {
							t = m.rsType(x.Type, &rsFrame{mod: en.def.mod, self: en.def})
						}
					}
				}
			}
		case rust.TupleExpr:
			if len(e.Kids) == 2 && isName(e.Kids[1]) && rsHostLike(e.Kids[0]) {
				t = &rsT{name: "u16"}
			}
		case rust.ReturnExpr:
			if len(e.Kids) > 0 && isName(e.Kids[0]) {
				t = s.fr.ret
			}
		case rust.BinaryExpr:
			for i := range 2 {
				if !isName(e.Kids[i]) {
					continue
				}
				switch o := e.Kids[1-i]; {
				case o.Kind == rust.LitExpr && o.Lit == rust.NumberLit:
					if v, ok := rsNumber(o.Text).(rsInt); ok && v.t != "" {
						t = &rsT{name: v.t}
					}
				case o.Kind == rust.PathExpr:
					if c := m.rsConstType(o.Path, s); c != nil {
						t = c
					}
				case o.Kind == rust.CastExpr:
					t = m.rsType(o.Type, s.fr)
				}
			}
		case rust.AssignExpr:
			if e.Kids[1] != nil && isName(e.Kids[1]) && e.Kids[0].Kind == rust.FieldExpr {
				for _, d := range m.rs().defs {
					for _, f := range d.item.Fields {
						if f.Name == e.Kids[0].Text && t == nil {
							t = m.rsType(f.Type, &rsFrame{mod: d.mod, self: d})
						}
					}
				}
			}
		}
		rsKids(e, look)
	}
	for i, k := range after {
		if i == len(after)-1 && isName(rsLast(k)) {
			return ret
		}
		if k.Kind == rust.LetStmt && k.Pat != nil && k.Pat.Kind == rust.NamePat && k.Pat.Name == name {
			if len(k.Kids) > 0 && isName(k.Kids[0]) {
				return m.rsType(k.Type, s.fr)
			}
			rsKids(k, look)
			return t
		}
		if k.Kind == rust.LetStmt && len(k.Kids) > 0 && isName(k.Kids[0]) && k.Type != nil {
			return m.rsType(k.Type, s.fr)
		}
		if look(k); t != nil {
			return t
		}
	}
	return t
}

// rsWhole reports whether an expression comes to a number that is written without its
// type, on one of its ways.
func rsWhole(e *rust.Expr, depth int) bool {
	if e == nil || depth > 20 {
		return false
	}
	switch e.Kind {
	case rust.LitExpr:
		v, ok := rsNumber(e.Text).(rsInt)
		return e.Lit == rust.NumberLit && ok && v.t == ""
	case rust.BlockExpr:
		return e.Tail && rsWhole(rsLast(e), depth+1)
	case rust.MethodExpr:
		return (e.Text == "unwrap_or" || e.Text == "map_or") && len(e.Kids) > 1 && rsWhole(e.Kids[1], depth+1)
	case rust.IfExpr:
		return rsWhole(rsLast(e.Kids[1]), depth+1) || rsWhole(e.Kids[2], depth+1)
	case rust.MatchExpr:
		for _, a := range e.Arms {
			if rsWhole(rsLast(a.Body), depth+1) {
				return true
			}
		}
	case rust.ClosureExpr:
		return rsWhole(e.Kids[0], depth+1)
	}
	return false
}

// rsLast is what a block comes to; anything else is what it is.
func rsLast(b *rust.Expr) *rust.Expr {
	for n := 0; b != nil && b.Kind == rust.BlockExpr && b.Tail && len(b.Kids) > 0 && n < 40; n++ {
		b = b.Kids[len(b.Kids)-1]
	}
	return b
}

// rsTaken is the type of what a pattern takes out of an option or a result, by how it is
// used.
func (m *machine) rsTaken(p *rust.Pat, body []*rust.Expr, s *rsScope, ret *rsT) *rsT {
	if p.Kind != rust.TuplePat || len(p.Kids) != 1 || p.Kids[0].Kind != rust.NamePat || len(p.Path) != 1 || p.Path[0] != "Ok" && p.Path[0] != "Some" {
		return nil
	}
	if t := m.rsHint(p.Kids[0].Name, body, s, ret); t != nil {
		return &rsT{name: "Option", args: []*rsT{t}}
	}
	return nil
}

// rsHostLike reports whether an expression stands for a host: the other half of a pair
// is a port.
func rsHostLike(e *rust.Expr) bool {
	switch e.Kind {
	case rust.ArrayExpr:
		return len(e.Kids) == 4 || len(e.Kids) == 8
	case rust.LitExpr:
		return e.Lit == rust.TextLit
	case rust.RefExpr, rust.MethodExpr, rust.FieldExpr:
		if len(e.Kids) > 0 && e.Kind != rust.FieldExpr {
			return rsHostLike(e.Kids[0])
		}
		return e.Text == "host" || e.Text == "address" || e.Text == "addr" || e.Text == "ip"
	case rust.PathExpr:
		switch last := e.Path[len(e.Path)-1]; strings.ToLower(last) {
		case "unspecified", "localhost", "host", "address", "addr", "ip", "bind", "interface", "any":
			return true
		}
	}
	return false
}

// rsConstType is the type of a constant or a variable that is known by now.
func (m *machine) rsConstType(p []string, s *rsScope) *rsT {
	if len(p) == 1 {
		if c := s.find(p[0]); c != nil {
			return rsTypeOf(c.v)
		}
	}
	if e := m.rsFind(p, s.fr.mod, s.fr); e.item != nil && e.item.Kind == rust.ConstItem {
		return m.rsType(e.item.Type, &rsFrame{mod: e.mod})
	}
	return nil
}

// rsKids calls a function for what stands below an expression.
func rsKids(e *rust.Expr, do func(*rust.Expr)) {
	for _, k := range e.Kids {
		if k != nil {
			do(k)
		}
	}
	for _, f := range e.Fields {
		do(f.Value)
	}
	for _, a := range e.Arms {
		if a.Guard != nil {
			do(a.Guard)
		}
		do(a.Body)
	}
	for _, b := range e.Branches {
		if b.From != nil {
			do(b.From)
		}
		do(b.Body)
	}
}

// rsTwo are the last two names of a path.
func rsTwo(p string) string {
	i := strings.LastIndexByte(p, '.')
	if i > 0 {
		if j := strings.LastIndexByte(p[:i], '.'); j >= 0 {
			return p[j+1:]
		}
	}
	return p
}

// rsNumber is a literal of a number.
func rsNumber(text string) any {
	text = strings.ReplaceAll(text, "_", "")
	for t := range rsWidth {
		if rest, ok := strings.CutSuffix(text, t); ok && rest != "" && !strings.HasSuffix(rest, "x") {
			if n, err := strconv.ParseInt(rest, 0, 64); err == nil {
				return rsInt{n, t}
			}
		}
	}
	if n, err := strconv.ParseInt(text, 0, 64); err == nil {
		if len(text) > 1 && text[0] == '0' && text[1] >= '0' && text[1] <= '9' { // no octal number
			n, _ = strconv.ParseInt(strings.TrimLeft(text, "0")+"", 10, 64)
		}
		return rsInt{n, ""}
	}
	for _, suffix := range []string{"", "f64", "f32"} {
		if f, err := strconv.ParseFloat(strings.TrimSuffix(text, suffix), 64); err == nil && !strings.HasPrefix(text, "0x") {
			return f
		}
	}
	return dontKnow("the number " + text)
}

// rsEval works an expression out; want is the type that stands where it goes, as far as
// that is known.
func (m *machine) rsEval(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if m.level >= reachDepth*3 {
		return nil, spent("nested too deep")
	}
	m.level++
	defer m.higher()
	at := rsAt{s.fr.mod.file, e.Off, e.End}
	switch e.Kind {
	case rust.LitExpr:
		return m.rsLiteral(e, want), nil
	case rust.PathExpr:
		return m.rsPath(e, s, want)
	case rust.CallExpr:
		return m.rsCallExpr(e, s, want, at)
	case rust.MethodExpr:
		return m.rsMethodExpr(e, s, want, at)
	case rust.MacroExpr:
		return m.rsMacro(e, s, want, at)
	case rust.FieldExpr, rust.IndexExpr:
		c, err := m.rsPlace(e, s)
		if err != nil {
			return nil, err
		}
		return m.rsCopied(c.v), nil
	case rust.UnaryExpr:
		return m.rsUnary(e, s, want)
	case rust.RefExpr:
		c, err := m.rsPlace(e.Kids[0], s)
		if err != nil {
			return nil, err
		}
		if e.Mut {
			if r, ok := c.v.(*rsRef); ok && e.Kids[0].Kind == rust.UnaryExpr {
				return r, nil
			}
			return &rsRef{c}, nil
		}
		return rsTyped(c.v, want), nil
	case rust.BinaryExpr:
		return m.rsBinary(e, s, want)
	case rust.AssignExpr:
		return nil, m.rsAssign(e, s)
	case rust.RangeExpr:
		return m.rsRange(e, s, want)
	case rust.CastExpr:
		return m.rsCast(e, s)
	case rust.TryExpr:
		var to *rsT
		if want != nil {
			to = &rsT{name: "Result", args: []*rsT{want}}
		}
		v, err := m.rsEval(e.Kids[0], s, to)
		if err != nil {
			return nil, err
		}
		return m.rsTry(v, s)
	case rust.AwaitExpr:
		v, err := m.rsEval(e.Kids[0], s, want)
		if err != nil {
			return nil, err
		}
		return m.rsWait(rsBare(v))
	case rust.TupleExpr:
		if len(e.Kids) == 0 {
			return nil, nil
		}
		l := &rsList{tuple: true}
		for i, k := range e.Kids {
			to := want.arg(i)
			if to == nil && i == 1 && len(e.Kids) == 2 && rsHostLike(e.Kids[0]) {
				to = &rsT{name: "u16"}
			}
			v, err := m.rsEval(k, s, to)
			if err != nil {
				return nil, err
			}
			l.items = append(l.items, &rsCell{v: rsTyped(v, to)})
		}
		return l, nil
	case rust.ArrayExpr:
		return m.rsArray(e, s, want)
	case rust.StructExpr:
		return m.rsStruct(e, s, want)
	case rust.BlockExpr:
		if e.Text == "async" {
			return &rsFuture{run: func() (any, error) {
				in := s.inner()
				fr := *s.fr
				fr.ret = want
				in.fr = &fr
				v, err := m.rsBody(e, in, want)
				if l, ok := err.(*rsLeave); ok && l.kind == "return" {
					return l.v, nil
				}
				return v, err
			}}, nil
		}
		v, err := m.rsBody(e, s.inner(), want)
		if l, ok := err.(*rsLeave); ok && l.kind == "break" && l.label != "" && l.label == e.Label {
			return l.v, nil
		}
		return v, err
	case rust.IfExpr:
		return m.rsIf(e, s, want)
	case rust.LetExpr:
		ok, known, err := m.rsTest(e, s)
		if err == nil && !known {
			err = undecided("whether a pattern fits")
		}
		return ok, err
	case rust.MatchExpr:
		return m.rsMatch(e, s, want)
	case rust.LoopExpr:
		return m.rsLoop(e, s, want)
	case rust.ClosureExpr:
		return &rsFn{name: "closure", expr: e, scope: s}, nil
	case rust.ReturnExpr:
		l := &rsLeave{kind: "return"}
		if len(e.Kids) > 0 {
			v, err := m.rsEval(e.Kids[0], s, s.fr.ret)
			if err != nil {
				return nil, err
			}
			l.v = rsTyped(v, s.fr.ret)
		}
		return nil, l
	case rust.BreakExpr:
		l := &rsLeave{kind: "break", label: e.Label}
		if len(e.Kids) > 0 {
			v, err := m.rsEval(e.Kids[0], s, nil)
			if err != nil {
				return nil, err
			}
			l.v = v
		}
		return nil, l
	case rust.ContinueExpr:
		return nil, &rsLeave{kind: "continue", label: e.Label}
	}
	return nil, giveUp("code that is not followed")
}

func (m *machine) rsLiteral(e *rust.Expr, want *rsT) any {
	switch e.Lit {
	case rust.NumberLit:
		v := rsNumber(e.Text)
		if want.is("f64") || want.is("f32") {
			if n, ok := v.(rsInt); ok && n.t == "" {
				return float64(n.n)
			}
		}
		return rsTyped(v, want)
	case rust.BoolLit:
		return e.Text == "true"
	case rust.CharLit:
		for _, r := range e.Text {
			return character(r)
		}
	}
	return e.Text
}

// rsTry is what ? makes of a value.
func (m *machine) rsTry(v any, s *rsScope) (any, error) {
	switch x := rsBare(v).(type) {
	case *rsData:
		if in, ok := x.holding(); ok {
			return in, nil
		}
		if x.variant == "Err" && s.fr.ret != nil && s.fr.ret.arg(1) != nil && s.fr.ret.arg(1).def != nil {
			to := s.fr.ret.arg(1)
			if from := rsTypeOf(x.fields[0].v); from == nil || from.def != to.def {
				if w, err := m.rsFrom(to, x.fields[0].v, rsAt{f: s.fr.mod.file}); err == nil {
					return nil, &rsLeave{kind: "return", v: rsMade("Result", "Err", w)}
				}
			}
		}
		return nil, &rsLeave{kind: "return", v: x}
	case *opaque: // it is taken to have gone well
		return x, nil
	}
	return v, nil
}

func (m *machine) rsUnary(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	if e.Text == "*" {
		c, err := m.rsPlace(e, s)
		if err != nil {
			return nil, err
		}
		if d, ok := c.v.(*rsData); ok && d.def != nil && len(d.def.methods["deref"]) > 0 && !(want != nil && want.def == d.def) && !(e.Kids[0].Kind == rust.PathExpr && e.Kids[0].Path[0] == "self") {
			return m.rsMethodCall(d.def.methods["deref"][0], d, nil, want, nil, rsAt{s.fr.mod.file, e.Off, e.End})
		}
		return m.rsCopied(c.v), nil
	}
	v, err := m.rsEval(e.Kids[0], s, want)
	if err != nil {
		return nil, err
	}
	switch x := rsOpened(v).(type) {
	case bool:
		if e.Text == "!" {
			return !x, nil
		}
	case rsInt:
		if e.Text == "-" {
			return rsInt{-x.n, x.t}, nil
		}
		return dontKnow("a number with its bits turned"), nil
	case float64:
		return -x, nil
	case *opaque:
		return dontKnow("the opposite of " + x.String()), nil
	}
	return nil, giveUp("an operator %s", e.Text)
}

func (m *machine) rsBinary(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	sign := e.Text
	if sign == "&&" || sign == "||" {
		ok, known, err := m.rsTest(e.Kids[0], s)
		if err != nil {
			return nil, err
		}
		if known && ok == (sign == "||") {
			return ok, nil
		}
		right, rightKnown, err := m.rsTest(e.Kids[1], s)
		switch {
		case err != nil:
			return nil, err
		case known && rightKnown:
			return right, nil
		case rightKnown && right == (sign == "||"):
			return right, nil
		}
		return dontKnow("a condition"), nil
	}
	compares := strings.Contains("==!=<=>=", sign)
	to := want
	if compares {
		to = nil
	}
	a, err := m.rsEval(e.Kids[0], s, to)
	if err != nil {
		return nil, err
	}
	if t := rsTypeOf(a); t != nil && rsWidth[t.name] != 0 && sign != "<<" && sign != ">>" {
		to = t
	}
	b, err := m.rsEval(e.Kids[1], s, to)
	if err != nil {
		return nil, err
	}
	return m.rsOperate(sign, a, b)
}

func (m *machine) rsOperate(sign string, a, b any) (any, error) {
	a, b = rsOpened(a), rsOpened(b)
	for _, v := range []any{a, b} {
		if o, ok := v.(*opaque); ok {
			return dontKnow("what is made of " + o.String()), nil
		}
	}
	if d, ok := a.(*rsData); ok && d.def != nil {
		trait := map[string]string{"==": "eq", "!=": "eq", "+": "add", "-": "sub", "*": "mul"}[sign]
		if meths := d.def.methods[trait]; trait != "" && len(meths) > 0 {
			v, err := m.rsMethodCall(meths[0], d, []any{b}, nil, nil, rsAt{f: d.def.mod.file})
			if yes, ok := v.(bool); ok && sign == "!=" {
				return !yes, err
			}
			return v, err
		}
	}
	switch sign {
	case "==", "!=", "<", ">", "<=", ">=":
		c, ok := rsCompare(a, b)
		if !ok {
			return dontKnow("how two values compare"), nil
		}
		switch sign {
		case "==":
			return c == 0, nil
		case "!=":
			return c != 0, nil
		case "<":
			return c < 0, nil
		case ">":
			return c > 0, nil
		case "<=":
			return c <= 0, nil
		}
		return c >= 0, nil
	}
	switch x := a.(type) {
	case string:
		if y, ok := b.(string); ok && sign == "+" {
			if len(x)+len(y) > maxText {
				return nil, spent("a text that grows")
			}
			return x + y, m.use(len(x) + len(y))
		}
	case bool:
		if y, ok := b.(bool); ok {
			switch sign {
			case "&":
				return x && y, nil
			case "|":
				return x || y, nil
			case "^":
				return x != y, nil
			}
		}
	case float64:
		if y, ok := b.(float64); ok {
			return arithmetic(sign, x, y)
		}
	case rsInt:
		y, ok := b.(rsInt)
		if !ok {
			break
		}
		t := x.t
		if t == "" && sign != "<<" && sign != ">>" {
			t = y.t
		}
		n, ok := rsArithmetic(sign, x.n, y.n)
		if !ok {
			if (sign == "/" || sign == "%") && y.n == 0 {
				return nil, certainly("panic", "a division by zero")
			}
			return dontKnow("a number that is too large"), nil
		}
		if !rsFits(n, t) {
			return nil, undecided("a number that %s does not hold", t)
		}
		return rsInt{n, t}, nil
	}
	return nil, giveUp("an operator %s", sign)
}

func rsArithmetic(sign string, a, b int64) (int64, bool) {
	const most = 1 << 52
	if (a > most || a < -most || b > most || b < -most) && sign != "&" && sign != "%" && sign != "/" {
		return 0, false
	}
	switch sign {
	case "+":
		return a + b, true
	case "-":
		return a - b, true
	case "*":
		if a != 0 && (a*b)/a != b {
			return 0, false
		}
		return a * b, true
	case "/":
		if b == 0 {
			return 0, false
		}
		return a / b, true
	case "%":
		if b == 0 {
			return 0, false
		}
		return a % b, true
	case "&":
		return a & b, true
	case "|":
		return a | b, true
	case "^":
		return a ^ b, true
	case "<<":
		if b < 0 || b > 40 {
			return 0, false
		}
		return a << b, true
	case ">>":
		if b < 0 || b > 63 {
			return 0, false
		}
		return a >> b, true
	}
	return 0, false
}

// rsTest works a condition out, with the patterns in it: the names that they take are
// known in the scope.
func (m *machine) rsTest(e *rust.Expr, s *rsScope, body ...*rust.Expr) (ok, known bool, err error) {
	switch {
	case e.Kind == rust.LetExpr:
		c, byRef, err := m.rsSubject(e.Kids[0], s, m.rsTaken(e.Pat, body, s, nil))
		if err != nil {
			return false, false, err
		}
		ok, known := m.rsBind(e.Pat, c.v, s, c, byRef)
		if o, isOpaque := rsBare(c.v).(*opaque); isOpaque && !known && o.path != "" && len(e.Pat.Path) == 1 {
			// What listens does.
			if listens := rsListener(o); listens {
				return e.Pat.Path[0] == "Ok" || e.Pat.Path[0] == "Some", true, nil
			}
		}
		return ok, known, nil
	case e.Kind == rust.BinaryExpr && e.Text == "&&":
		ok, known, err := m.rsTest(e.Kids[0], s, append([]*rust.Expr{e.Kids[1]}, body...)...)
		if err != nil || known && !ok {
			return ok, known, err
		}
		right, rightKnown, err := m.rsTest(e.Kids[1], s, body...)
		if err == nil && rightKnown && !right {
			return false, true, nil
		}
		return right, known && rightKnown, err
	}
	v, err := m.rsEval(e, s, nil)
	if err != nil {
		return false, false, err
	}
	switch v := rsOpened(v).(type) {
	case bool:
		return v, true, nil
	case *opaque:
		return false, false, nil
	}
	return false, false, giveUp("a condition")
}

// rsListener reports whether something is a listener, or the server around one.
func rsListener(o *opaque) bool {
	for n := 0; o != nil && n < 60; n++ {
		if strings.HasSuffix(o.path, "Listener.bind()") || strings.HasSuffix(o.path, "Server.http()") {
			return true
		}
		o = o.recv
	}
	return false
}

func (m *machine) rsIf(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	in := s.inner()
	ok, known, err := m.rsTest(e.Kids[0], in, e.Kids[1])
	if err != nil {
		return nil, err
	}
	if !known {
		return m.rsEither(undecided("a condition that is not known"), s, want, e.Kids[1], e.Kids[2])
	}
	if ok {
		return m.rsEval(e.Kids[1], in, want)
	}
	if e.Kids[2] == nil {
		return nil, nil
	}
	return m.rsEval(e.Kids[2], s, want)
}

// rsEither goes on behind ways of which it is not known which one is taken: one that
// ends the program is not, and what changes nothing that counts may have happened.
func (m *machine) rsEither(why error, s *rsScope, want *rsT, ways ...*rust.Expr) (any, error) {
	var open []*rust.Expr
	for _, w := range ways {
		if w == nil || !rsEnds(w) {
			open = append(open, w)
		}
	}
	if len(open) == 1 && len(ways) > 1 {
		if open[0] == nil {
			return nil, nil
		}
		in := s.inner()
		return m.rsEval(open[0], in, want)
	}
	for _, w := range ways {
		if w != nil && !rsQuiet(w, 0) {
			return nil, why
		}
	}
	return dontKnow(why.Error()), nil
}

// rsEndings are functions that end the program.
var rsEndings = map[string]bool{"exit": true, "abort": true, "panic": true, "unreachable": true, "todo": true, "unimplemented": true, "bail": true}

// rsEnds reports whether an expression ends the program, or the function with an error.
func rsEnds(e *rust.Expr) bool {
	switch e.Kind {
	case rust.BlockExpr:
		for _, k := range e.Kids {
			if k.Kind == rust.ExprStmt || k.Kind == rust.ReturnExpr || k.Kind == rust.CallExpr || k.Kind == rust.MacroExpr {
				if rsEnds(k) {
					return true
				}
			}
		}
	case rust.ExprStmt:
		return rsEnds(e.Kids[0])
	case rust.CallExpr:
		return e.Kids[0].Kind == rust.PathExpr && len(e.Kids[0].Path) > 0 && rsEndings[e.Kids[0].Path[len(e.Kids[0].Path)-1]]
	case rust.MacroExpr:
		return rsEndings[e.Path[len(e.Path)-1]]
	case rust.ReturnExpr:
		return len(e.Kids) > 0 && e.Kids[0].Kind == rust.CallExpr && e.Kids[0].Kids[0].Kind == rust.PathExpr && strings.Join(e.Kids[0].Kids[0].Path, ".") == "Err"
	}
	return false
}

// rsLoud are the names of functions and methods that count, or change what they are
// called on.
var rsLoud = map[string]bool{"bind": true, "serve": true, "run": true, "listen": true, "start": true, "launch": true, "exit": true, "abort": true, "push": true, "push_str": true, "insert": true, "remove": true, "clear": true, "extend": true, "set_var": true, "remove_var": true, "send": true, "store": true, "replace": true, "take": true, "pop": true, "retain": true, "truncate": true, "start_server": true, "http": true, "set": true, "get_or_init": true, "swap": true, "append": true, "drain": true, "block_on": true, "spawn": true, "accept": true, "incoming": true, "recv": true, "next": true, "join": true, "set_port": true, "set_ip": true}

// rsQuiet reports whether an expression changes nothing that counts, whether it runs or
// not.
func rsQuiet(e *rust.Expr, loops int) bool {
	switch e.Kind {
	case rust.AssignExpr, rust.ReturnExpr, rust.TryExpr, rust.AwaitExpr, rust.ItemStmt:
		return false
	case rust.BreakExpr, rust.ContinueExpr:
		return loops > 0 && e.Label == ""
	case rust.MethodExpr:
		if rsLoud[e.Text] || strings.HasSuffix(e.Text, "_mut") {
			return false
		}
	case rust.CallExpr:
		of := e.Kids[0]
		if of.Kind != rust.PathExpr || len(of.Path) == 0 || rsLoud[of.Path[len(of.Path)-1]] {
			return false
		}
		if last := of.Path[len(of.Path)-1]; len(of.Path) == 1 && last[0] >= 'a' { // of the tree: not looked into
			return false
		}
	case rust.RefExpr:
		if e.Mut {
			return false
		}
	case rust.MacroExpr:
		switch e.Path[len(e.Path)-1] {
		case "println", "eprintln", "print", "eprint", "info", "warn", "error", "debug", "trace", "log", "format", "vec", "matches", "assert", "dbg":
		default:
			return false
		}
	case rust.LoopExpr:
		loops++
	}
	quiet := true
	rsKids(e, func(k *rust.Expr) { quiet = quiet && rsQuiet(k, loops) })
	return quiet
}

// rsSubject is what a pattern is held against; byRef says that the names in it stand for
// places in it.
func (m *machine) rsSubject(e *rust.Expr, s *rsScope, want *rsT) (*rsCell, bool, error) {
	byRef := e.Kind == rust.RefExpr && e.Mut || e.Kind == rust.MethodExpr && (e.Text == "as_mut" || e.Text == "get_mut" || strings.HasSuffix(e.Text, "_mut"))
	for e.Kind == rust.RefExpr {
		e = e.Kids[0]
	}
	c, err := m.rsHolder(e, s, want)
	if err != nil {
		return nil, false, err
	}
	if r, ok := c.v.(*rsRef); ok {
		return r.cell, true, nil
	}
	return c, byRef, nil
}

func (m *machine) rsMatch(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	var takes *rsT
	for _, a := range e.Arms {
		if takes == nil {
			takes = m.rsTaken(a.Pat, []*rust.Expr{a.Body}, s, want)
		}
	}
	c, byRef, err := m.rsSubject(e.Kids[0], s, takes)
	if err != nil {
		return nil, err
	}
	if o, ok := rsBare(c.v).(*opaque); ok {
		return m.rsMatchUnknown(e, o, s, want)
	}
	for _, a := range e.Arms {
		in := s.inner()
		ok, known := m.rsBind(a.Pat, c.v, in, c, byRef)
		if !known {
			return m.rsArms(undecided("whether a pattern fits"), e, s, want)
		}
		if !ok {
			continue
		}
		if a.Guard != nil {
			yes, known, err := m.rsTest(a.Guard, in)
			if err != nil {
				return nil, err
			}
			if !known {
				return m.rsArms(undecided("the condition of an arm"), e, s, want)
			}
			if !yes {
				continue
			}
		}
		return m.rsEval(a.Body, in, want)
	}
	return nil, giveUp("a match in which nothing fits")
}

func (m *machine) rsArms(why error, e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	for _, a := range e.Arms {
		if !rsQuiet(a.Body, 0) {
			return nil, why
		}
	}
	return dontKnow(why.Error()), nil
}

// rsMatchUnknown matches what is not known: a pattern that takes everything is taken,
// and what comes of a library is taken to have gone well where the program ends else.
func (m *machine) rsMatchUnknown(e *rust.Expr, o *opaque, s *rsScope, want *rsT) (any, error) {
	for i, a := range e.Arms {
		last := ""
		if len(a.Pat.Path) > 0 {
			last = a.Pat.Path[len(a.Pat.Path)-1]
		}
		well := last == "Ok" || last == "Some"
		if well && o.path != "" && a.Guard == nil {
			goes := rsListener(o)
			if !goes {
				goes = true
				for j, b := range e.Arms {
					goes = goes && (j == i || rsEnds(b.Body))
				}
			}
			if goes {
				in := s.inner()
				for _, k := range a.Pat.Kids {
					m.rsBind(k, o, in, nil, false)
				}
				return m.rsEval(a.Body, in, want)
			}
		}
		if i == 0 && a.Guard == nil && (a.Pat.Kind == rust.NamePat && len(a.Pat.Kids) == 0 || a.Pat.Kind == rust.WildPat) {
			in := s.inner()
			m.rsBind(a.Pat, o, in, nil, false)
			return m.rsEval(a.Body, in, want)
		}
	}
	why := o.String()
	if o.path != "" {
		why = "what " + o.path + " gives"
	}
	return m.rsArms(undecided("%s", why), e, s, want)
}

// rsBind holds a value against a pattern and takes its names; cell is where the value
// lies, and byRef says that its names stand for places in it.
func (m *machine) rsBind(p *rust.Pat, v any, s *rsScope, cell *rsCell, byRef bool) (ok, known bool) {
	if p == nil {
		return true, true
	}
	switch p.Kind {
	case rust.WildPat, rust.RestPat:
		return true, true
	case rust.NamePat:
		if len(p.Kids) > 0 {
			if ok, known := m.rsBind(p.Kids[0], v, s, cell, byRef); !ok || !known {
				return ok, known
			}
		}
		if e := m.rsFind([]string{p.Name}, s.fr.mod, s.fr); len(p.Kids) == 0 && !p.Mut && (e.variant != nil || e.item != nil && e.item.Kind == rust.ConstItem) {
			return m.rsSame(e, []string{p.Name}, v, s)
		}
		if byRef && cell != nil {
			s.vars[p.Name] = &rsCell{v: &rsRef{cell}}
		} else {
			s.vars[p.Name] = &rsCell{v: m.rsCopied(v)}
		}
		return true, true
	case rust.RefPat:
		return m.rsBind(p.Kids[0], rsBare(v), s, nil, false)
	case rust.OrPat:
		for _, k := range p.Kids {
			if ok, known := m.rsBind(k, v, s, cell, byRef); ok || !known {
				return ok, known
			}
		}
		return false, true
	}
	v = rsOpened(v)
	o, unknown := v.(*opaque)
	switch p.Kind {
	case rust.LitPat, rust.RangePat:
		if unknown {
			return false, false
		}
		edge := func(e *rust.Expr) any {
			if e == nil {
				return nil
			}
			x, err := m.rsEval(e, s, rsTypeOf(v))
			if err != nil {
				return dontKnow("the edge of a range")
			}
			return rsOpened(x)
		}
		lo, hi := edge(p.Lo), edge(p.Hi)
		if p.Kind == rust.LitPat {
			c, ok := rsCompare(v, lo)
			return c == 0, ok
		}
		if lo != nil {
			c, ok := rsCompare(v, lo)
			if !ok || c < 0 {
				return false, ok
			}
		}
		if hi != nil {
			c, ok := rsCompare(v, hi)
			return ok && (c < 0 || c == 0 && p.Text != ".."), ok
		}
		return true, true
	case rust.PathPat:
		e := m.rsFind(p.Path, s.fr.mod, s.fr)
		if unknown {
			return false, false
		}
		return m.rsSame(e, p.Path, v, s)
	case rust.TuplePat:
		if len(p.Path) == 0 {
			if unknown {
				for _, k := range p.Kids {
					if ok, known := m.rsBind(k, dontKnow("a part of "+o.String()), s, nil, false); !ok || !known {
						return ok, known
					}
				}
				return true, true
			}
			if v == nil {
				return len(p.Kids) == 0, true
			}
			l, isList := v.(*rsList)
			if !isList {
				return false, false
			}
			return m.rsBindAll(p.Kids, l.items, s, byRef)
		}
		if unknown {
			return false, false
		}
		d, isData := v.(*rsData)
		if !isData {
			return false, false
		}
		if !m.rsIs(d, p.Path, s) {
			return false, true
		}
		if len(d.names) > 0 {
			if d.def != nil || len(p.Kids) != 1 { // an error of the library
				return false, false
			}
		}
		return m.rsBindAll(p.Kids, d.fields, s, byRef)
	case rust.StructPat:
		d, isData := v.(*rsData)
		if unknown || !isData {
			return false, false
		}
		if !m.rsIs(d, p.Path, s) {
			return false, true
		}
		for _, f := range p.Fields {
			c := d.field(f.Name)
			if c == nil {
				return false, false
			}
			if ok, known := m.rsBind(f.Pat, c.v, s, c, byRef); !ok || !known {
				return ok, known
			}
		}
		return true, true
	case rust.SlicePat:
		l, isList := v.(*rsList)
		if unknown || !isList {
			return false, false
		}
		return m.rsBindAll(p.Kids, l.items, s, byRef)
	}
	return false, false
}

func (m *machine) rsBindAll(pats []*rust.Pat, cells []*rsCell, s *rsScope, byRef bool) (ok, known bool) {
	rest := -1
	for i, p := range pats {
		if p.Kind == rust.RestPat || p.Kind == rust.NamePat && len(p.Kids) == 1 && p.Kids[0].Kind == rust.RestPat {
			rest = i
		}
	}
	if rest < 0 && len(pats) != len(cells) || rest >= 0 && len(cells) < len(pats)-1 {
		return false, true
	}
	for i, p := range pats {
		at := i
		if rest >= 0 && i > rest {
			at = len(cells) - (len(pats) - i)
		}
		if i == rest {
			if p.Kind == rust.NamePat {
				s.vars[p.Name] = &rsCell{v: &rsList{items: cells[i : len(cells)-(len(pats)-i-1)]}}
			}
			continue
		}
		if ok, known := m.rsBind(p, cells[at].v, s, cells[at], byRef); !ok || !known {
			return ok, known
		}
	}
	return true, true
}

// rsIs reports whether a value is of the variant or the structure of a path.
func (m *machine) rsIs(d *rsData, p []string, s *rsScope) bool {
	last := p[len(p)-1]
	if d.def == nil {
		return d.variant == last || d.variant == "" && d.typ == last
	}
	if e := m.rsFind(p, s.fr.mod, s.fr); e.def != nil {
		return e.def == d.def && (e.variant == nil || e.variant.Name == d.variant)
	}
	return d.variant == last || d.variant == "" && d.typ == last
}

// rsSame holds a value against a constant or a variant without fields.
func (m *machine) rsSame(e rsEntity, p []string, v any, s *rsScope) (ok, known bool) {
	switch d, isData := v.(*rsData); {
	case e.item != nil && e.item.Kind == rust.ConstItem || e.def != nil && e.variant == nil && len(e.rest) == 1 || e.path != "" && !isData:
		c, err := m.rsPath(&rust.Expr{Kind: rust.PathExpr, Path: p}, s, nil)
		if err != nil {
			return false, false
		}
		x, ok := rsCompare(v, c)
		return x == 0, ok
	case isData && d.def == nil && e.path != "" && d.variant == "" && len(d.names) > 0: // an error of the library
		return false, false
	case isData:
		return m.rsIs(d, p, s), true
	}
	return false, false
}

// rsPlace is where something lies.
func (m *machine) rsPlace(e *rust.Expr, s *rsScope) (*rsCell, error) {
	switch e.Kind {
	case rust.PathExpr:
		if len(e.Path) == 1 {
			if c := s.find(e.Path[0]); c != nil {
				return c, nil
			}
		}
	case rust.UnaryExpr:
		if e.Text != "*" {
			break
		}
		c, err := m.rsPlace(e.Kids[0], s)
		if err != nil {
			return nil, err
		}
		switch v := c.v.(type) {
		case *rsRef:
			if sh, ok := v.cell.v.(*rsShared); ok && !sh.unset {
				return sh.cell, nil
			}
			return v.cell, nil
		case *rsShared:
			if !v.unset {
				return v.cell, nil
			}
		}
		return c, nil
	case rust.FieldExpr:
		c, err := m.rsPlace(e.Kids[0], s)
		if err != nil {
			return nil, err
		}
		switch v := rsOpened(c.v).(type) {
		case *rsData:
			if f := v.field(e.Text); f != nil {
				return f, nil
			}
		case *rsList:
			if i, err := strconv.Atoi(e.Text); err == nil && i < len(v.items) {
				return v.items[i], nil
			}
		case *opaque:
			why := v.why
			if v.path != "" {
				return &rsCell{v: &opaque{path: v.path + "." + e.Text, recv: v.recv}}, nil
			}
			return &rsCell{v: dontKnow(why)}, nil
		default:
			if e.Text == "0" { // of a type that is looked through
				return c, nil
			}
		}
		return nil, giveUp("the field %s", e.Text)
	case rust.IndexExpr:
		return m.rsIndex(e, s)
	}
	v, err := m.rsEval(e, s, nil)
	if err != nil {
		return nil, err
	}
	return &rsCell{v: v}, nil
}

func (m *machine) rsIndex(e *rust.Expr, s *rsScope) (*rsCell, error) {
	c, err := m.rsPlace(e.Kids[0], s)
	if err != nil {
		return nil, err
	}
	k, err := m.rsEval(e.Kids[1], s, nil)
	if err != nil {
		return nil, err
	}
	k = rsOpened(k)
	if o, ok := k.(*opaque); ok {
		return &rsCell{v: dontKnow("what stands at " + o.String())}, nil
	}
	switch v := rsOpened(c.v).(type) {
	case *rsList:
		if r, ok := k.(*rsData); ok {
			items, err := m.rsSlice(r, len(v.items))
			if err != nil {
				return nil, err
			}
			return &rsCell{v: &rsList{items: v.items[items[0]:items[1]]}}, nil
		}
		i, ok := k.(rsInt)
		if !ok {
			break
		}
		if i.n < 0 || i.n >= int64(len(v.items)) {
			return nil, certainly("panic", "an index out of bounds")
		}
		return v.items[i.n], nil
	case string:
		if r, ok := k.(*rsData); ok {
			at, err := m.rsSlice(r, len(v))
			if err != nil {
				return nil, err
			}
			return &rsCell{v: v[at[0]:at[1]]}, nil
		}
	case *rsMap:
		at, ok := v.cell(k)
		if !ok {
			return &rsCell{v: dontKnow("what a map holds")}, nil
		}
		if at == nil {
			return nil, certainly("panic", "a key that is not there")
		}
		return at, nil
	case *rsJSON:
		return &rsCell{v: m.rsJSONAt(v, k)}, nil
	case *opaque:
		return &rsCell{v: dontKnow("what stands in " + v.String())}, nil
	}
	return nil, giveUp("an index")
}

func (m *machine) rsAssign(e *rust.Expr, s *rsScope) error {
	if e.Kids[0].Kind == rust.PathExpr && len(e.Kids[0].Path) == 1 && e.Kids[0].Path[0] == "_" {
		_, err := m.rsEval(e.Kids[1], s, nil)
		return err
	}
	if e.Kids[0].Kind == rust.TupleExpr && e.Text == "=" {
		v, err := m.rsEval(e.Kids[1], s, nil)
		if err != nil {
			return err
		}
		l, ok := rsBare(v).(*rsList)
		if !ok || len(l.items) != len(e.Kids[0].Kids) {
			return giveUp("a list that is taken apart")
		}
		for i, k := range e.Kids[0].Kids {
			if k.Kind == rust.PathExpr && len(k.Path) == 1 && k.Path[0] == "_" {
				continue
			}
			c, err := m.rsPlace(k, s)
			if err != nil {
				return err
			}
			c.v = l.items[i].v
		}
		return nil
	}
	c, err := m.rsPlace(e.Kids[0], s)
	if err != nil {
		return err
	}
	var want *rsT
	if _, unset := c.v.(*opaque); !unset {
		want = rsTypeOf(c.v)
		if want != nil && (want.name == "Option" || want.name == "Result") {
			want = m.rsFieldType(e.Kids[0], s)
		}
	}
	if want == nil && e.Kids[0].Kind == rust.FieldExpr {
		want = m.rsFieldType(e.Kids[0], s)
	}
	v, err := m.rsEval(e.Kids[1], s, want)
	if err != nil {
		return err
	}
	if e.Text != "=" {
		if r, ok := c.v.(*rsRef); ok { // x += 1 of a reference that is written with its star
			c = r.cell
		}
		if v, err = m.rsOperate(strings.TrimSuffix(e.Text, "="), c.v, v); err != nil {
			return err
		}
	}
	c.v = rsTyped(v, want)
	return nil
}

// rsFieldType is the type of a field of a structure of the tree.
func (m *machine) rsFieldType(e *rust.Expr, s *rsScope) *rsT {
	if e.Kind != rust.FieldExpr {
		return nil
	}
	c, err := m.rsPlace(e.Kids[0], s)
	if err != nil {
		return nil
	}
	if d, ok := rsOpened(c.v).(*rsData); ok && d.def != nil {
		for _, f := range d.def.item.Fields {
			if f.Name == e.Text {
				return m.rsType(f.Type, &rsFrame{mod: d.def.mod, self: d.def})
			}
		}
	}
	return nil
}

func (m *machine) rsCast(e *rust.Expr, s *rsScope) (any, error) {
	t := m.rsType(e.Type, s.fr)
	v, err := m.rsEval(e.Kids[0], s, nil)
	if err != nil || t == nil {
		return v, err
	}
	switch x := rsOpened(v).(type) {
	case rsInt:
		if t.name == "f64" || t.name == "f32" {
			return float64(x.n), nil
		}
		if t.name == "char" {
			return character(rune(x.n)), nil
		}
		return rsWrapped(x.n, t.name), nil
	case float64:
		if rsWidth[t.name] != 0 {
			n := int64(x)
			if !rsFits(n, t.name) {
				return dontKnow("a number that does not fit"), nil
			}
			return rsInt{n, t.name}, nil
		}
		return x, nil
	case bool:
		if x {
			return rsInt{1, t.name}, nil
		}
		return rsInt{0, t.name}, nil
	case character:
		return rsWrapped(int64(x), t.name), nil
	case *rsData:
		if x.def != nil && rsWidth[t.name] != 0 {
			n := int64(-1)
			for _, va := range x.def.item.Variants {
				n++
				if va.Value != nil {
					w, err := m.rsEval(va.Value, &rsScope{fr: &rsFrame{mod: x.def.mod}}, t)
					if err != nil {
						return nil, err
					}
					if i, ok := w.(rsInt); ok {
						n = i.n
					}
				}
				if va.Name == x.variant {
					return rsInt{n, t.name}, nil
				}
			}
		}
	case *opaque:
		return x, nil
	}
	return v, nil
}

// rsWrapped is a number as a smaller type holds it.
func rsWrapped(n int64, t string) any {
	switch w := rsWidth[t]; {
	case w > 0 && w < 64:
		return rsInt{n & (1<<w - 1), t}
	case w < 0 && w > -64:
		shift := 64 + w
		return rsInt{n << shift >> shift, t}
	}
	return rsInt{n, t}
}

func (m *machine) rsArray(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	l := &rsList{}
	if e.Text == ";" && len(e.Kids) == 2 {
		v, err := m.rsEval(e.Kids[0], s, want.arg(0))
		if err != nil {
			return nil, err
		}
		n, err := m.rsEval(e.Kids[1], s, nil)
		if err != nil {
			return nil, err
		}
		k, ok := rsOpened(n).(rsInt)
		if !ok || k.n > maxItems || k.n < 0 {
			return dontKnow("a list of a size that is not known"), nil
		}
		for range k.n {
			l.items = append(l.items, &rsCell{v: m.rsClone(v)})
		}
		return l, m.use(int(k.n))
	}
	for _, k := range e.Kids {
		v, err := m.rsEval(k, s, want.arg(0))
		if err != nil {
			return nil, err
		}
		l.items = append(l.items, &rsCell{v: rsTyped(v, want.arg(0))})
	}
	return l, m.use(len(l.items))
}

func (m *machine) rsStruct(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	en := m.rsFind(e.Path, s.fr.mod, s.fr)
	var def *rsDef
	var fields []rust.Field
	variant := ""
	switch {
	case en.variant != nil:
		def, fields, variant = en.def, en.variant.Fields, en.variant.Name
	case en.def != nil:
		def, fields = en.def, en.def.item.Fields
	default: // of a library: what it is given is kept
		d := &rsData{typ: e.Path[len(e.Path)-1]}
		for _, f := range e.Fields {
			v, err := m.rsEval(f.Value, s, nil)
			if err != nil {
				return nil, err
			}
			d.names, d.fields = append(d.names, f.Name), append(d.fields, &rsCell{v: v})
		}
		return d, nil
	}
	types := &rsFrame{mod: def.mod, self: def, types: map[string]*rsT{}}
	for i, g := range def.item.Generics {
		if want != nil && want.def == def && want.arg(i) != nil {
			types.types[g.Name] = want.arg(i)
		}
	}
	d := &rsData{def: def, typ: def.name, variant: variant}
	set := map[string]any{}
	for _, f := range e.Fields {
		var t *rsT
		for _, x := range fields {
			if x.Name == f.Name {
				t = m.rsType(x.Type, types)
			}
		}
		v, err := m.rsEval(f.Value, s, t)
		if err != nil {
			return nil, err
		}
		set[f.Name] = rsTyped(v, t)
	}
	var base *rsData
	if len(e.Kids) > 0 {
		v, err := m.rsEval(e.Kids[0], s, &rsT{name: def.name, def: def})
		if err != nil {
			return nil, err
		}
		base, _ = rsOpened(v).(*rsData)
	}
	for i, f := range fields {
		name := f.Name
		if name == "" {
			name = strconv.Itoa(i)
		}
		v, ok := set[name]
		if !ok && base != nil {
			if c := base.field(name); c != nil {
				v, ok = c.v, true
			}
		}
		if !ok {
			v = dontKnow("the field " + name)
		}
		if f.Name != "" {
			d.names = append(d.names, name)
		}
		d.fields = append(d.fields, &rsCell{v: v})
	}
	return d, nil
}

func (m *machine) rsLoop(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	turn := func(body *rust.Expr, in *rsScope) (done bool, v any, err error) {
		if err := m.step(); err != nil {
			return true, nil, err
		}
		_, err = m.rsEval(body, in, nil)
		if l, ok := err.(*rsLeave); ok && (l.label == "" || l.label == e.Label) {
			switch l.kind {
			case "break":
				return true, l.v, nil
			case "continue":
				return false, nil, nil
			}
		}
		return err != nil, nil, err
	}
	at := rsAt{s.fr.mod.file, e.Off, e.End}
	switch e.Text {
	case "loop", "while":
		for n := 0; ; n++ {
			if n >= maxTurns && len(m.calls) > 0 {
				return nil, &exit{stays: true}
			}
			in := s.inner()
			body := e.Kids[0]
			if e.Text == "while" {
				ok, known, err := m.rsTest(e.Kids[0], in)
				if err != nil {
					return nil, err
				}
				if !known {
					if rsQuiet(e.Kids[1], 1) {
						return nil, nil
					}
					return nil, undecided("the condition of a loop")
				}
				if !ok {
					return nil, nil
				}
				body = e.Kids[1]
			}
			if done, v, err := turn(body, in); done || err != nil {
				return rsTyped(v, want), err
			}
		}
	}
	v, err := m.rsEval(e.Kids[0], s, nil)
	if err != nil {
		return nil, err
	}
	it, err := m.rsIterate(v, at)
	if err != nil {
		return nil, err
	}
	if it == nil {
		o, _ := rsOpened(v).(*opaque)
		if o != nil && len(m.calls) > 0 && rsServing(o) {
			return nil, &exit{stays: true}
		}
		if rsQuiet(e.Kids[1], 1) {
			return nil, nil
		}
		return nil, undecided("a loop over what is not known")
	}
	_, byRef := rsBare(v).(*rsList)
	for n := 0; ; n++ {
		x, ok, err := it.take()
		if err != nil {
			return nil, err
		}
		if !ok {
			return nil, nil
		}
		if n > maxItems {
			return nil, spent("a loop without an end")
		}
		in := s.inner()
		if ok, known := m.rsBind(e.Pat, x, in, nil, byRef); !ok || !known {
			return nil, giveUp("a pattern that does not fit")
		}
		if done, _, err := turn(e.Kids[1], in); done || err != nil {
			return nil, err
		}
	}
}

// rsRange is a range: what is gone through, or a part of a list.
func (m *machine) rsRange(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	var ends [2]any
	var t *rsT
	for i := range 2 {
		if e.Kids[i] == nil {
			continue
		}
		v, err := m.rsEval(e.Kids[i], s, t)
		if err != nil {
			return nil, err
		}
		v = rsOpened(v)
		if _, ok := v.(*opaque); ok {
			return dontKnow("a range whose ends are not known"), nil
		}
		ends[i] = v
		t = rsTypeOf(v)
	}
	if a, ok := ends[0].(rsInt); ok && a.t == "" && t != nil {
		ends[0] = rsTyped(a, t)
	}
	d := &rsData{typ: "Range", variant: e.Text, fields: []*rsCell{{v: ends[0]}, {v: ends[1]}}}
	return d, nil
}

// rsSlice are the ends of a part of what has so many elements.
func (m *machine) rsSlice(r *rsData, n int) ([2]int, error) {
	out := [2]int{0, n}
	if r.typ != "Range" {
		return out, giveUp("a part of a list")
	}
	for i, c := range r.fields {
		if x, ok := c.v.(rsInt); ok {
			if out[i] = int(x.n); i == 1 && r.variant == "..=" {
				out[i]++
			}
		}
	}
	if out[0] > out[1] || out[0] < 0 || out[1] > n {
		return out, certainly("panic", "a part that is out of bounds")
	}
	return out, nil
}
