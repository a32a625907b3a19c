package trace

import (
	"net/netip"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/rust"
)

// rsPath is what a path stands for.
func (m *machine) rsPath(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	if len(e.Path) == 1 {
		if c := s.find(e.Path[0]); c != nil {
			return rsTyped(m.rsCopied(c.v), want), nil
		}
	}
	if e.Head != nil && len(e.Path) > 0 {
		if t := m.rsType(e.Head, s.fr); t != nil {
			return m.rsOfType(t, []string{e.Path[len(e.Path)-1]}, e, s, want)
		}
	}
	en := m.rsFind(e.Path, s.fr.mod, s.fr)
	switch {
	case en.variant != nil:
		return m.rsVariant(en.def, en.variant), nil
	case en.def != nil && len(en.rest) == 0:
		if en.def.item.Tuple {
			return m.rsVariant(en.def, &rust.Variant{Fields: en.def.item.Fields, Tuple: len(en.def.item.Fields) > 0}), nil
		}
	case en.def != nil:
		return m.rsOfType(&rsT{name: en.def.name, def: en.def}, en.rest, e, s, want)
	case en.t != nil:
		return m.rsOfType(en.t, en.rest, e, s, want)
	case en.item != nil:
		switch en.item.Kind {
		case rust.ConstItem:
			v, err := m.rsConst(en.item, en.mod, nil)
			return rsTyped(v, want), err
		case rust.FnItem:
			f := &rsFn{name: en.item.Name, fn: en.item.Fn, mod: en.mod}
			f.types = m.rsGiven(en.item.Fn.Generics, e.Types, s)
			return f, nil
		case rust.TraitItem: // of the trait, for what it is called with
			if len(en.rest) == 1 {
				return m.rsOfTrait(en.rest[0], want), nil
			}
		}
	}
	if v := rsConstant(en.path); v != nil {
		return v, nil
	}
	switch en.path {
	case "None":
		return rsNone(), nil
	case "Default.default":
		return m.rsDefault(want)
	}
	if i := strings.LastIndexByte(en.path, '.'); i > 0 { // what the tree does for types from outside
		of, name := en.path[:i], en.path[i+1:]
		of = of[strings.LastIndexByte(of, '.')+1:]
		for _, impl := range m.rs().traits[name] {
			if impl.of == of {
				if impl.method.item != nil {
					return m.rsConst(impl.method.item, impl.method.mod, nil)
				}
				return &rsFn{name: name, fn: impl.method.fn, mod: impl.method.mod}, nil
			}
		}
	}
	p := en.path
	var types []*rsT
	for _, t := range e.Types {
		types = append(types, m.rsType(t, s.fr))
	}
	var head *rsT
	if e.Head != nil {
		head = m.rsType(e.Head, s.fr)
	}
	return &rsFn{name: p, native: func(args []any, want *rsT, at rsAt) (any, error) {
		return m.rsBuiltin(p, args, types, head, want, s, at)
	}}, nil
}

// rsGiven are the types that a call names.
func (m *machine) rsGiven(generics []rust.Generic, types []*rust.Type, s *rsScope) map[string]*rsT {
	if len(types) == 0 {
		return nil
	}
	out := map[string]*rsT{}
	for i, t := range types {
		if i < len(generics) {
			if k := m.rsType(t, s.fr); k != nil {
				out[generics[i].Name] = k
			}
		}
	}
	return out
}

// rsVariant is a variant without fields, or what makes one.
func (m *machine) rsVariant(d *rsDef, v *rust.Variant) any {
	if !v.Tuple {
		return &rsData{def: d, typ: d.name, variant: v.Name}
	}
	return &rsFn{name: v.Name, native: func(args []any, _ *rsT, _ rsAt) (any, error) {
		x := &rsData{def: d, typ: d.name, variant: v.Name}
		for i, a := range args {
			var t *rsT
			if i < len(v.Fields) {
				t = m.rsType(v.Fields[i].Type, &rsFrame{mod: d.mod, self: d})
			}
			x.fields = append(x.fields, &rsCell{v: rsTyped(a, t)})
		}
		return x, nil
	}}
}

// rsOfType is a function or a constant of a type.
func (m *machine) rsOfType(t *rsT, rest []string, e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	name := rest[len(rest)-1]
	if t.def != nil {
		if meths := t.def.methods[name]; len(meths) > 0 {
			if meths[0].item != nil {
				return m.rsConst(meths[0].item, meths[0].mod, t.def)
			}
			if len(meths) == 1 {
				return m.rsMethodFn(meths[0], e, s), nil
			}
			return &rsFn{name: name, native: func(args []any, want *rsT, at rsAt) (any, error) { // by what it is given
				meth := m.rsChoose(meths, args)
				f := m.rsMethodFn(meth, e, s)
				return m.rsCall(f, args, want, at)
			}}, nil
		}
	}
	for _, impl := range m.rs().traits[name] {
		if impl.of == t.name || impl.of == "" {
			if impl.method.item != nil {
				return m.rsConst(impl.method.item, impl.method.mod, t.def)
			}
			return &rsFn{name: name, fn: impl.method.fn, mod: impl.method.mod, def: t.def}, nil
		}
	}
	switch {
	case name == "default" && t.def != nil:
		return &rsFn{name: name, native: func([]any, *rsT, rsAt) (any, error) { return m.rsDefault(t) }}, nil
	case t.def != nil && (name == "parse" || name == "parse_from" || name == "try_parse" || name == "from_args"):
		return &rsFn{name: name, native: func(args []any, _ *rsT, at rsAt) (any, error) { return m.rsClap(t.def, name, args, at) }}, nil
	case t.def != nil && name == "from_str" && t.def.traits["EnumString"]:
		return &rsFn{name: name, native: func(args []any, _ *rsT, at rsAt) (any, error) { return m.rsParse(first(args), t, at) }}, nil
	}
	if v := rsConstant(t.name + "." + name); v != nil {
		return v, nil
	}
	return &rsFn{name: t.name + "." + name, native: func(args []any, want *rsT, at rsAt) (any, error) {
		return m.rsBuiltin(t.name+"."+name, args, nil, t, want, s, at)
	}}, nil
}

// rsOfTrait is a function of a trait, whose type is told by what it is given or by where
// it goes.
func (m *machine) rsOfTrait(name string, want *rsT) *rsFn {
	return &rsFn{name: name, native: func(args []any, want *rsT, at rsAt) (any, error) {
		if len(args) > 0 {
			if d, ok := rsOpened(args[0]).(*rsData); ok && d.def != nil && len(d.def.methods[name]) > 0 {
				return m.rsMethodCall(d.def.methods[name][0], args[0], args[1:], want, nil, at)
			}
		}
		if want != nil && want.def != nil && len(want.def.methods[name]) > 0 {
			return m.rsMethodCall(want.def.methods[name][0], nil, args, want, nil, at)
		}
		return nil, giveUp("the function %s of a trait", name)
	}}
}

func (m *machine) rsMethodFn(meth *rsMethod, e *rust.Expr, s *rsScope) *rsFn {
	f := &rsFn{name: meth.fn.Name, fn: meth.fn, mod: meth.mod, def: meth.def}
	if e != nil {
		f.types = m.rsGiven(meth.fn.Generics, e.Types, s)
		if e.Head != nil && meth.impl != nil {
			for k, t := range m.rsGiven(meth.impl.Generics, e.Head.Args, s) {
				if f.types == nil {
					f.types = map[string]*rsT{}
				}
				f.types[k] = t
			}
		}
	}
	return f
}

// rsChoose is the function of several of one name that takes what it is given.
func (m *machine) rsChoose(meths []*rsMethod, args []any) *rsMethod {
	for _, meth := range meths {
		fits := meth.fn != nil
		for i, a := range args {
			if !fits || i >= len(meth.fn.Params) {
				break
			}
			now, takes := rsTypeOf(a), m.rsType(meth.fn.Params[i].Type, &rsFrame{mod: meth.mod, self: meth.def})
			if now == nil || takes == nil {
				continue
			}
			same := now.name == takes.name || now.name == "String" && takes.name == "str"
			fits = same && now.def == takes.def
		}
		if fits {
			return meth
		}
	}
	return meths[0]
}

// rsMethodCall calls a method of the tree.
func (m *machine) rsMethodCall(meth *rsMethod, this any, args []any, want *rsT, types map[string]*rsT, at rsAt) (any, error) {
	if meth.fn == nil {
		return nil, giveUp("a constant that is called")
	}
	def := meth.def
	if def == nil {
		if d, ok := rsOpened(this).(*rsData); ok {
			def = d.def
		}
	}
	if !meth.fn.Self && this != nil {
		args = append([]any{this}, args...)
	}
	return m.rsFn(meth.fn, meth.mod, def, types, this, args, want, at)
}

// rsConst is a constant, which is worked out once.
func (m *machine) rsConst(it *rust.Item, mod *rsModule, def *rsDef) (any, error) {
	st := m.rs()
	if c := st.consts[it]; c != nil {
		return c.v, nil
	}
	if st.busy[it] {
		return nil, giveUp("a constant that is made of itself")
	}
	if it.Value == nil {
		return nil, giveUp("the constant %s", it.Name)
	}
	st.busy[it] = true
	defer delete(st.busy, it)
	fr := &rsFrame{mod: mod, self: def}
	t := m.rsType(it.Type, fr)
	v, err := m.rsEval(it.Value, &rsScope{vars: map[string]*rsCell{}, fr: fr}, t)
	if err != nil {
		return nil, err
	}
	st.consts[it] = &rsCell{v: rsTyped(v, t)}
	return st.consts[it].v, nil
}

// rsConstants are those of the standard library (Rust 1.91, modules std::net, std::u16
// and others).
func rsConstant(p string) any {
	switch two := rsTwo(p); two {
	case "Ipv4Addr.UNSPECIFIED":
		return rsIP{netip.IPv4Unspecified()}
	case "Ipv4Addr.LOCALHOST":
		return rsIP{netip.AddrFrom4([4]byte{127, 0, 0, 1})}
	case "Ipv4Addr.BROADCAST":
		return rsIP{netip.AddrFrom4([4]byte{255, 255, 255, 255})}
	case "Ipv6Addr.UNSPECIFIED":
		return rsIP{netip.IPv6Unspecified()}
	case "Ipv6Addr.LOCALHOST":
		return rsIP{netip.IPv6Loopback()}
	default:
		t, edge, _ := strings.Cut(two, ".")
		w, ok := rsWidth[t]
		if !ok || edge != "MAX" && edge != "MIN" {
			return nil
		}
		switch {
		case edge == "MIN" && w > 0:
			return rsInt{0, t}
		case w > 0 && w < 64:
			return rsInt{1<<w - 1, t}
		case w < 0 && w > -64 && edge == "MAX":
			return rsInt{1<<(-w-1) - 1, t}
		case w < 0 && w > -64:
			return rsInt{-(1 << (-w - 1)), t}
		}
	}
	return nil
}

// rsDefault is the value that a type has by itself.
func (m *machine) rsDefault(t *rsT) (any, error) {
	if t == nil {
		return dontKnow("the default of a type that is not told"), nil
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("types that hold each other")
	}
	defer func() { m.depth-- }()
	if d := t.def; d != nil {
		if meths := d.methods["default"]; len(meths) > 0 && meths[0].fn != nil {
			return m.rsFn(meths[0].fn, meths[0].mod, d, nil, nil, nil, t, rsAt{f: d.mod.file})
		}
		if !d.traits["Default"] {
			return nil, giveUp("the default of %s", t.name)
		}
		if d.item.Kind == rust.EnumItem {
			for i := range d.item.Variants {
				for _, a := range d.item.Variants[i].Attrs {
					if a.Path == "default" {
						return &rsData{def: d, typ: d.name, variant: d.item.Variants[i].Name}, nil
					}
				}
			}
			return nil, giveUp("the default of %s", t.name)
		}
		x := &rsData{def: d, typ: d.name}
		for _, f := range d.item.Fields {
			v, err := m.rsDefault(m.rsType(f.Type, &rsFrame{mod: d.mod, self: d}))
			if err != nil {
				return nil, err
			}
			if f.Name != "" {
				x.names = append(x.names, f.Name)
			}
			x.fields = append(x.fields, &rsCell{v: v})
		}
		return x, nil
	}
	switch {
	case rsWidth[t.name] != 0:
		return rsInt{0, t.name}, nil
	case t.name == "()":
		if len(t.args) == 0 {
			return nil, nil
		}
		l := &rsList{tuple: true}
		for _, a := range t.args {
			v, err := m.rsDefault(a)
			if err != nil {
				return nil, err
			}
			l.items = append(l.items, &rsCell{v: v})
		}
		return l, nil
	}
	switch t.name {
	case "String", "str", "PathBuf", "OsString":
		return "", nil
	case "bool":
		return false, nil
	case "f64", "f32":
		return 0.0, nil
	case "Option":
		return rsNone(), nil
	case "Vec", "VecDeque":
		return &rsList{}, nil
	case "HashSet", "BTreeSet":
		return &rsList{set: true}, nil
	case "HashMap", "IndexMap":
		return newRsMap(false), nil
	case "BTreeMap":
		return newRsMap(true), nil
	case "Mutex", "RwLock", "RefCell", "Cell":
		v, err := m.rsDefault(t.arg(0))
		return &rsShared{cell: &rsCell{v: v}, kind: t.name}, err
	}
	return dontKnow("the default of " + t.name), nil
}

// rsParse is what a text is as a value of a type.
func (m *machine) rsParse(v any, t *rsT, at rsAt) (any, error) {
	v = rsOpened(v)
	if o, ok := v.(*opaque); ok {
		return dontKnow("what is read from " + o.String()), nil
	}
	text, ok := v.(string)
	if !ok {
		return nil, giveUp("what is read from something that is no text")
	}
	if t == nil {
		n, err := strconv.ParseInt(strings.TrimPrefix(text, "+"), 10, 64)
		switch {
		case err == nil && n >= 0 && n < 1<<16:
			return rsOk(rsInt{n, ""}), nil
		case err == nil:
			return nil, undecided("a number whose type is not told")
		}
		return nil, undecided("what is read from a text into a type that is not told")
	}
	if t.def != nil {
		if meths := t.def.methods["from_str"]; len(meths) > 0 {
			return m.rsMethodCall(meths[0], nil, []any{text}, nil, nil, at)
		}
		if t.def.traits["EnumString"] { // strum 0.27, "EnumString"
			for _, va := range t.def.item.Variants {
				names := []string{va.Name}
				for _, a := range va.Attrs {
					if a.Path == "strum" {
						for _, x := range a.Args {
							if (x.Name == "serialize" || x.Name == "to_string") && x.Value != nil {
								names = append(names, x.Value.Text)
							}
						}
					}
				}
				if len(names) > 1 {
					names = names[1:]
				} else if style := rsRenameAll(t.def.item.Attrs, "strum", "serialize_all"); style != "" {
					names[0] = rsStyled(va.Name, style)
				}
				if slices.Contains(names, text) {
					return rsOk(&rsData{def: t.def, typ: t.def.name, variant: va.Name}), nil
				}
			}
			return rsErr("ParseError", "Matching variant not found"), nil
		}
		return nil, giveUp("how a %s is read", t.name)
	}
	if w := rsWidth[t.name]; w != 0 {
		digits := strings.TrimPrefix(text, "+")
		n, err := strconv.ParseInt(digits, 10, 64)
		if w > 0 && strings.HasPrefix(digits, "-") || strings.ContainsAny(digits, "_+") || digits == "" {
			return rsErr("ParseIntError", "invalid digit found in string"), nil
		}
		if err != nil || !rsFits(n, t.name) {
			return rsErr("ParseIntError", "number does not fit in target type"), nil
		}
		return rsOk(rsInt{n, t.name}), nil
	}
	switch t.name {
	case "String", "str", "PathBuf", "OsString":
		return rsOk(text), nil
	case "bool":
		if text == "true" || text == "false" {
			return rsOk(text == "true"), nil
		}
		return rsErr("ParseBoolError", "provided string was not `true` or `false`"), nil
	case "f64", "f32":
		f, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return rsErr("ParseFloatError", "invalid float literal"), nil
		}
		return rsOk(f), nil
	case "char":
		if r := []rune(text); len(r) == 1 {
			return rsOk(character(r[0])), nil
		}
		return rsErr("ParseCharError", "too many characters"), nil
	case "IpAddr", "Ipv4Addr", "Ipv6Addr":
		a, err := netip.ParseAddr(text)
		if err != nil || a.Zone() != "" || t.name == "Ipv4Addr" && !a.Is4() || t.name == "Ipv6Addr" && a.Is4() {
			return rsErr("AddrParseError", "invalid IP address syntax"), nil
		}
		return rsOk(rsIP{a}), nil
	case "SocketAddr", "SocketAddrV4", "SocketAddrV6":
		a, err := netip.ParseAddrPort(text)
		if err != nil || t.name == "SocketAddrV4" && !a.Addr().Is4() {
			return rsErr("AddrParseError", "invalid socket address syntax"), nil
		}
		return rsOk(rsSock{a}), nil
	}
	return nil, giveUp("how a %s is read", t.name)
}

// rsFrom makes a value of a type out of another one.
func (m *machine) rsFrom(t *rsT, v any, at rsAt) (any, error) {
	x := rsOpened(v)
	if t == nil {
		return v, nil
	}
	if d := t.def; d != nil {
		if now, ok := x.(*rsData); ok && now.def == d {
			return v, nil
		}
		var fits []*rsMethod
		for _, meth := range d.methods["from"] {
			if meth.fn != nil {
				fits = append(fits, meth)
			}
		}
		if len(fits) > 0 {
			return m.rsMethodCall(m.rsChoose(fits, []any{v}), nil, []any{v}, nil, nil, at)
		}
	}
	if now, ok := x.(*rsData); ok && now.def != nil { // impl From<Own> for String, impl Into<…> for Own
		if meths := now.def.methods["into"]; len(meths) > 0 {
			return m.rsMethodCall(meths[0], v, nil, t, nil, at)
		}
	}
	for _, impl := range m.rs().traits["from"] {
		if impl.of == t.name && impl.method.fn != nil && len(impl.method.fn.Params) == 1 {
			takes := m.rsType(impl.method.fn.Params[0].Type, &rsFrame{mod: impl.method.mod})
			if now := rsTypeOf(v); takes != nil && now != nil && takes.name == now.name {
				return m.rsFn(impl.method.fn, impl.method.mod, nil, nil, nil, []any{v}, t, at)
			}
		}
	}
	switch y := x.(type) {
	case rsInt:
		if rsWidth[t.name] != 0 {
			return rsInt{y.n, t.name}, nil
		}
		if t.name == "f64" {
			return float64(y.n), nil
		}
	case character:
		if rsWidth[t.name] != 0 {
			return rsInt{int64(y), t.name}, nil
		}
		if t.name == "String" {
			return string(rune(y)), nil
		}
	case bool:
		if rsWidth[t.name] != 0 {
			return rsCastBool(y, t.name), nil
		}
	case *rsList:
		switch t.name {
		case "IpAddr", "Ipv4Addr", "Ipv6Addr":
			return rsAddress(y.values()), nil
		case "SocketAddr", "SocketAddrV4", "SocketAddrV6":
			if len(y.items) == 2 {
				return m.rsSocket(y.items[0].v, y.items[1].v), nil
			}
		case "HashMap", "BTreeMap", "IndexMap":
			mp := newRsMap(t.name == "BTreeMap")
			for _, c := range y.items {
				if kv, ok := rsBare(c.v).(*rsList); ok && len(kv.items) == 2 {
					mp.put(kv.items[0].v, kv.items[1].v)
				}
			}
			return mp, nil
		}
	}
	if t.name == "Option" {
		if d, ok := x.(*rsData); !ok || d.typ != "Option" {
			return rsSome(v), nil
		}
	}
	return v, nil
}

func rsCastBool(b bool, t string) any {
	if b {
		return rsInt{1, t}
	}
	return rsInt{0, t}
}

// rsAddress is an address of the numbers in it.
func rsAddress(parts []any) any {
	var n []int64
	for _, p := range parts {
		i, ok := rsOpened(p).(rsInt)
		if !ok {
			return dontKnow("an address")
		}
		n = append(n, i.n)
	}
	switch len(n) {
	case 4:
		return rsIP{netip.AddrFrom4([4]byte{byte(n[0]), byte(n[1]), byte(n[2]), byte(n[3])})}
	case 8, 16:
		var b [16]byte
		for i, x := range n {
			if len(n) == 8 {
				b[2*i], b[2*i+1] = byte(x>>8), byte(x)
			} else {
				b[i] = byte(x)
			}
		}
		return rsIP{netip.AddrFrom16(b)}
	}
	return dontKnow("an address")
}

// rsSocket is an address with a port.
func (m *machine) rsSocket(host, port any) any {
	host, port = rsOpened(host), rsOpened(port)
	if l, ok := host.(*rsList); ok {
		host = rsAddress(l.values())
	}
	ip, ok := host.(rsIP)
	n, isInt := port.(rsInt)
	if !ok || !isInt || n.n < 0 || n.n > 65535 {
		for _, v := range []any{host, port} {
			if o, is := v.(*opaque); is {
				return dontKnow(o.String())
			}
		}
		return dontKnow("an address with a port")
	}
	return rsSock{netip.AddrPortFrom(ip.a, uint16(n.n))}
}

func (m *machine) rsCallExpr(e *rust.Expr, s *rsScope, want *rsT, at rsAt) (any, error) {
	of := e.Kids[0]
	// What is made of one value is of the type that the whole is of.
	if of.Kind == rust.PathExpr && len(of.Path) > 0 && s.find(of.Path[0]) == nil {
		last := of.Path[len(of.Path)-1]
		if en := m.rsFind(of.Path, s.fr.mod, s.fr); en.path != "" && en.t == nil {
			switch last {
			case "Ok", "Some", "Err":
				t := want.arg(0)
				if last == "Err" {
					t = want.arg(1)
				}
				if len(e.Kids) != 2 {
					break
				}
				v, err := m.rsEval(e.Kids[1], s, t)
				if err != nil {
					return nil, err
				}
				typ := "Result"
				if last == "Some" {
					typ = "Option"
				}
				return rsMade(typ, last, rsTyped(v, t)), nil
			}
		}
	}
	f, err := m.rsEval(of, s, nil)
	if err != nil {
		return nil, err
	}
	var params []rust.Param
	fr := &rsFrame{mod: s.fr.mod}
	fn, _ := rsOpened(f).(*rsFn)
	if fn != nil {
		switch {
		case fn.fn != nil:
			params = fn.fn.Params
			fr = &rsFrame{mod: fn.mod, self: fn.def, types: fn.types}
			if fn.fn.Self && of.Kind == rust.PathExpr {
				params = append([]rust.Param{{}}, params...)
			}
			if len(fn.fn.Generics) > 0 { // of what it gives
				names, types := map[string]bool{}, map[string]*rsT{}
				for _, g := range fn.fn.Generics {
					names[g.Name] = true
				}
				for k, t := range fn.types {
					types[k] = t
				}
				m.rsUnify(fn.fn.Ret, want, names, types)
				fr.types = types
			}
		case fn.expr != nil:
			params, fr = fn.expr.Params, fn.scope.fr
		}
	}
	var args []any
	for i, a := range e.Kids[1:] {
		var t *rsT
		if i < len(params) {
			t = m.rsType(params[i].Type, fr)
		} else if fn != nil && fn.native != nil {
			t = rsTakes(fn.name, i, want)
		}
		v, err := m.rsEval(a, s, t)
		if err != nil {
			return nil, err
		}
		args = append(args, rsTyped(v, t))
	}
	return m.rsCall(f, args, want, at)
}

// rsTakes is the type of what functions of the standard library are given.
func rsTakes(name string, i int, want *rsT) *rsT {
	switch two := rsTwo(name); two {
	case "SocketAddr.new", "SocketAddrV4.new", "SocketAddrV6.new":
		if i == 1 {
			return &rsT{name: "u16"}
		}
		return &rsT{name: map[string]string{"SocketAddr.new": "IpAddr", "SocketAddrV4.new": "Ipv4Addr", "SocketAddrV6.new": "Ipv6Addr"}[two]}
	case "SocketAddr.from":
		return &rsT{name: "()", args: []*rsT{nil, {name: "u16"}}}
	case "Ipv4Addr.new":
		return &rsT{name: "u8"}
	case "Box.new", "Arc.new", "Rc.new", "IpAddr.V4", "IpAddr.V6":
		return want
	case "Mutex.new", "RwLock.new", "RefCell.new", "Cell.new":
		return want.arg(0)
	case "cmp.max", "cmp.min", "max", "min", "mem.take", "identity":
		return want
	}
	return nil
}

// rsOutside calls something outside of the tree.
func (m *machine) rsOutside(o *opaque, args []any, at rsAt) (any, error) {
	if o.path == "" {
		m.rsHanded(args)
		return dontKnow("what " + o.why + " gives"), nil
	}
	where := m.rsSpot(at)
	plain := make([]any, len(args))
	for i, a := range args {
		plain[i] = a
	}
	name := o.path[strings.LastIndexByte(o.path, '.')+1:]
	n := len(m.calls)
	stays := m.note(o, plain, nil, where)
	if len(m.calls) > n {
		m.rs().vague = false
		if stays {
			return nil, &exit{stays: true}
		}
		if bad := m.rsRefused(args); bad != nil && (name == "http" || name == "bind" && !strings.HasSuffix(o.path, "UnixListener.bind")) {
			m.calls = m.calls[:n]
			return bad, nil
		}
		back := &opaque{path: o.path + "()", recv: o}
		if name == "bind" && strings.HasSuffix(o.path, "Listener.bind") || name == "http" {
			return rsOk(back), nil
		}
		return back, nil
	}
	if len(m.calls) > 0 && (name == "accept" || name == "recv") && rsListener(o) {
		return nil, &exit{stays: true}
	}
	if len(m.calls) > 0 && (name == "for_each" || name == "try_for_each" || name == "next") && strings.Contains(o.path, "incoming") {
		return nil, &exit{stays: true}
	}
	if !rsHarmless(o.path) && !rsListener(o) {
		m.rs().vague = true
	}
	m.rsHanded(args)
	back := &opaque{path: o.path + "()", recv: o, args: plain}
	if len(back.path) > 400 {
		return dontKnow("a chain of calls"), nil
	}
	for _, a := range args { // what serves a listener that it is given
		if l, ok := rsOpened(a).(*opaque); ok && rsListener(l) && len(m.calls) > 0 {
			back.recv = &opaque{path: o.path, recv: l}
		}
	}
	return back, nil
}

// rsHarmless reports whether calls of a crate neither serve nor wait: of logging, of the
// time, of a listener's own settings.
func rsHarmless(p string) bool {
	head, _, _ := strings.Cut(p, ".")
	switch head {
	case "tracing", "tracing_subscriber", "log", "env_logger", "simple_logger", "pretty_env_logger", "color_eyre", "console_subscriber", "rand", "chrono", "uuid", "time", "serde_json":
		return true
	}
	switch p[strings.LastIndexByte(p, '.')+1:] {
	case "local_addr", "set_nonblocking", "set_ttl", "route", "layer", "with_state", "nest", "merge", "new", "from_secs", "from_millis", "now", "elapsed", "write_all", "flush", "to_socket_addrs", "get", "post", "put", "delete", "app_data", "wrap", "service", "workers", "map", "and", "or", "with", "boxed":
		return true
	}
	return false
}

// rsHanded notes functions that are given away, which may be called back.
func (m *machine) rsHanded(args []any) {
	for _, a := range args {
		switch f := rsOpened(a).(type) {
		case *rsFuture: // it is awaited by what it was given to
			m.waiting = m.waiting || !f.ready && len(m.calls) == 0
		case *rsFn:
			m.waiting = m.waiting || f.fn == nil && f.native == nil
		}
	}
}

// rsRefused is the error of an address that nothing can be bound to; nil for any other.
func (m *machine) rsRefused(args []any) any {
	if len(args) == 0 {
		return nil
	}
	v := rsOpened(args[0])
	if t, ok := v.(string); ok {
		host, port, cut := cutLast(t, ":")
		_, err := strconv.ParseUint(port, 10, 16)
		if !cut || err != nil || host == "" && !strings.HasPrefix(t, ":") {
			return rsErr("io::Error", "invalid socket address")
		}
	}
	return nil
}

func cutLast(s, sep string) (before, after string, found bool) {
	if i := strings.LastIndex(s, sep); i >= 0 {
		return s[:i], s[i+len(sep):], true
	}
	return s, "", false
}

// rsFile is what a file of the tree holds; ok is false where it has none.
func (m *machine) rsFile(name any) (text string, known, ok bool) {
	p, isText := rsOpened(name).(string)
	if !isText {
		return "", false, false
	}
	t, in := m.treePath(p)
	if !in {
		return "", false, false
	}
	text, ok = m.e.Loader.Text(t)
	if !ok && m.has(t) {
		return "", false, false
	}
	return text, true, ok
}

// rsFolder is where a program of Cargo has its manifest.
func (m *machine) rsFolder() string {
	for dir := path.Dir(m.main.Name); ; dir = path.Dir(dir) {
		if m.has(path.Join(dir, "Cargo.toml")) || dir == "." || dir == "/" {
			return dir
		}
	}
}
