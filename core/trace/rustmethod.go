package trace

import (
	"net/netip"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"ubique/core/rust"
)

// rsInner are methods of options and results that give what is in them, rsSame those
// that give one of the same (Rust 1.91, std::option, std::result; anyhow 1, "Context").
var (
	rsInner  = words("unwrap expect unwrap_or unwrap_or_else unwrap_or_default unwrap_unchecked await")
	rsSameAs = words("ok or or_else map_err cloned copied as_ref as_deref context with_context ok_or ok_or_else filter inspect inspect_err flatten clone as_mut as_deref_mut wrap_err wrap_err_with take to_owned err transpose")
	// rsOneByOne are methods of iterators that give one of the same, rsOneOf those that
	// give one of its values (std::iter::Iterator).
	rsOneByOne = words("filter skip take rev peekable copied cloned skip_while take_while chain step_by inspect into_iter iter by_ref fuse")
	rsOneOf    = words("next last nth find max min max_by_key min_by_key reduce")
	rsSteady   = words("min max clamp saturating_add saturating_sub wrapping_add wrapping_sub pow abs")
	rsThrough  = words("as_str as_ref as_mut as_slice as_mut_slice borrow borrow_mut as_bytes deref deref_mut to_string_lossy into_owned into_boxed_str into_boxed_slice as_path as_os_str to_path_buf by_ref into_inner leak boxed as_ptr into_string to_mut from_ref into_vec fuse instrument in_current_span enter make_mut")
)

// rsReceiver is the type of what a method is called on, by that of what it gives.
func rsReceiver(name string, want *rsT) *rsT {
	switch {
	case want == nil:
		return nil
	case rsInner[name]:
		return &rsT{name: "Option", args: []*rsT{want}}
	case want.is("Iterator") && rsOneByOne[name], rsSameAs[name], rsSteady[name]:
		return want
	case name == "collect":
		if of := want.arg(0); want.name == "Result" || want.name == "Option" {
			return &rsT{name: "Iterator", args: []*rsT{{name: want.name, args: []*rsT{of.arg(0), want.arg(1)}}}}
		}
		return &rsT{name: "Iterator", args: []*rsT{want.arg(0)}}
	case name == "sum", name == "product":
		return &rsT{name: "Iterator", args: []*rsT{want}}
	case want.name == "Option" && rsOneOf[name]:
		return &rsT{name: "Iterator", args: want.args}
	}
	return nil
}

func (m *machine) rsMethodExpr(e *rust.Expr, s *rsScope, want *rsT, at rsAt) (any, error) {
	name := e.Text
	types := make([]*rsT, len(e.Types))
	for i, t := range e.Types {
		types[i] = m.rsType(t, s.fr)
	}
	to := want
	if name == "collect" || name == "sum" || name == "product" {
		to = rsFirstType(firstType(types), want)
	}
	c, err := m.rsHolder(e.Kids[0], s, rsReceiver(name, to))
	if err != nil {
		return nil, err
	}
	meth := m.rsMethodOf(c.v, name)
	var args []any
	for i, a := range e.Kids[1:] {
		var t *rsT
		switch {
		case meth != nil && i < len(meth.fn.Params):
			fr := &rsFrame{mod: meth.mod, self: meth.def}
			t = m.rsType(meth.fn.Params[i].Type, fr)
		case name == "unwrap_or", name == "or", name == "map_or" && i == 0:
			t = want
		case rsSteady[name], name == "eq", name == "contains", name == "saturating_mul", name == "checked_add":
			t = rsTypeOf(c.v)
			if d, ok := rsOpened(c.v).(*rsData); ok && d.typ == "Range" {
				t = rsTypeOf(d.fields[0].v)
			}
			if t != nil && t.name == "Vec" {
				t = t.arg(0)
			}
		case name == "insert" || name == "push" || name == "store" || name == "set":
		}
		v, err := m.rsEval(a, s, t)
		if err != nil {
			return nil, err
		}
		args = append(args, rsTyped(v, t))
	}
	if meth != nil {
		this := any(c.v)
		if _, isRef := c.v.(*rsRef); meth.fn.Mut && !isRef {
			this = &rsRef{c}
		} else if meth.fn.Mut {
			this = c.v
		} else {
			this = rsBare(c.v)
		}
		return m.rsMethodCall(meth, this, args, want, m.rsGiven(meth.fn.Generics, e.Types, s), at)
	}
	v, err := m.rsMethod(c, name, args, types, want, s, at)
	if err != nil {
		return nil, err
	}
	return rsTyped(v, want), nil
}

// rsHolder is where the receiver of a method lies.
func (m *machine) rsHolder(e *rust.Expr, s *rsScope, want *rsT) (*rsCell, error) {
	switch {
	case e.Kind == rust.PathExpr && len(e.Path) == 1 && s.find(e.Path[0]) != nil, e.Kind == rust.FieldExpr, e.Kind == rust.IndexExpr, e.Kind == rust.UnaryExpr && e.Text == "*":
		return m.rsPlace(e, s)
	}
	v, err := m.rsEval(e, s, want)
	return &rsCell{v: v}, err
}

// rsMethodOf is the method of the tree that a value has; nil where it has none.
func (m *machine) rsMethodOf(v any, name string) *rsMethod {
	if sh, ok := rsBare(v).(*rsShared); ok && (sh.unset || name == "lock" || name == "read" || name == "write" || name == "borrow" || name == "load" || name == "clone") {
		return nil
	}
	x := rsOpened(v)
	if d, ok := x.(*rsData); ok && d.def != nil {
		for _, meth := range d.def.methods[name] {
			if meth.fn != nil && meth.fn.Self {
				return meth
			}
		}
	}
	of := ""
	if t := rsTypeOf(x); t != nil {
		of = t.name
	}
	for _, impl := range m.rs().traits[name] {
		if f := impl.method.fn; f != nil && f.Self && (impl.of == of && of != "" || impl.of == "" || of == "String" && impl.of == "str") && known(x) {
			return impl.method
		}
	}
	return nil
}

// rsMethod calls a method that no code of the tree has.
func (m *machine) rsMethod(c *rsCell, name string, args []any, types []*rsT, want *rsT, s *rsScope, at rsAt) (any, error) {
	v := rsBare(c.v)
	if sh, ok := v.(*rsShared); ok {
		x, done, err := m.rsSharedMethod(sh, name, args, want, at)
		if done || err != nil {
			return x, err
		}
		v = rsOpened(v)
	}
	if o, ok := v.(*opaque); ok {
		return m.rsOpaqueMethod(o, name, args, want, at)
	}
	if d, ok := v.(*rsData); ok && strings.HasPrefix(d.typ, "config::") {
		return m.rsConfigMethod(d, name, args, types, want, at)
	}
	if d, ok := v.(*rsData); ok && strings.HasPrefix(d.typ, "process::") {
		return m.rsProcess(d, name, args, at)
	}
	switch {
	case name == "clone" || name == "to_owned":
		return m.rsClone(v), nil
	case rsThrough[name]:
		_, isData := v.(*rsData)
		_, isJSON := v.(*rsJSON)
		if !isJSON && (!isData || name != "as_ref" && name != "as_mut" && name != "into_inner") {
			return c.v, nil
		}
	case name == "into" || name == "try_into":
		to := want
		if name == "try_into" {
			to = want.arg(0)
			if n, ok := v.(rsInt); ok && to != nil {
				if !rsFits(n.n, to.name) {
					return rsErr("TryFromIntError", "out of range integral type conversion attempted"), nil
				}
				return rsOk(rsInt{n.n, to.name}), nil
			}
			x, err := m.rsFrom(to, v, at)
			return rsOk(x), err
		}
		return m.rsFrom(to, v, at)
	case name == "to_string":
		t, err := m.rsShow(v, "", at)
		return t, err
	case name == "eq" || name == "ne":
		return m.rsOperate(map[string]string{"eq": "==", "ne": "!="}[name], v, first(args))
	case name == "cmp" || name == "partial_cmp":
		n, ok := rsCompare(v, first(args))
		if !ok {
			return dontKnow("how two values compare"), nil
		}
		o := rsMade("Ordering", []string{"Less", "Equal", "Greater"}[n+1])
		if name == "partial_cmp" {
			return rsSome(o), nil
		}
		return o, nil
	case name == "type_id" || name == "hash":
		return dontKnow("what " + name + " gives"), nil
	}
	switch x := v.(type) {
	case *rsData:
		switch {
		case x.typ == "Option" || x.typ == "Result":
			return m.rsOptional(c, x, name, args, want, at)
		case x.typ == "Range":
			return m.rsRangeMethod(x, name, args, types, want, at)
		case x.typ == "Ordering" && len(x.fields) == 0:
			return m.rsOrdering(x, name, args, at)
		case x.typ == "clap::Command" || x.typ == "clap::Arg" || x.typ == "clap::Matches":
			return m.rsClapMethod(x, name, args, types, at)
		case x.typ == "Entry":
			return m.rsEntry(x, name, args, at)
		case len(x.names) > 0 && x.names[0] == "\x00text": // an error
			switch name {
			case "kind":
				return dontKnow("the kind of an error"), nil
			case "source", "description":
				return rsNone(), nil
			case "print", "exit":
				return nil, &exit{}
			}
			return dontKnow("what an error says"), nil
		}
		if it := x.def; it != nil && len(it.methods["deref"]) > 0 {
			in, err := m.rsMethodCall(it.methods["deref"][0], x, nil, nil, nil, at)
			if err != nil {
				return nil, err
			}
			if meth := m.rsMethodOf(in, name); meth != nil {
				return m.rsMethodCall(meth, in, args, want, nil, at)
			}
			return m.rsMethod(&rsCell{v: in}, name, args, types, want, s, at)
		}
		if it := x.def; it != nil && len(it.methods["next"]) > 0 { // an iterator of the tree
			i, err := m.rsIterate(c.v, at)
			if err != nil {
				return nil, err
			}
			return m.rsIterMethod(i, name, args, types, want, s, at)
		}
	case string:
		return m.rsTextMethod(c, x, name, args, types, want, at)
	case rsInt:
		return m.rsIntMethod(x, name, args)
	case float64:
		return dontKnow("what is made of a number with a fraction"), nil
	case bool:
		switch name {
		case "then":
			if !x {
				return rsNone(), nil
			}
			y, err := m.rsCall(first(args), nil, want.arg(0), at)
			return rsSome(y), err
		case "then_some":
			return rsMaybe(first(args), x), nil
		}
	case character:
		return rsCharMethod(x, name, args)
	case *rsList:
		return m.rsListMethod(x, name, args, types, want, s, at)
	case *rsMap:
		return m.rsMapMethod(x, name, args, types, want, s, at)
	case *rsIter:
		return m.rsIterMethod(x, name, args, types, want, s, at)
	case rsIP:
		return rsIPMethod(x, name)
	case rsSock:
		switch name {
		case "ip":
			return rsIP{x.a.Addr()}, nil
		case "port":
			return rsInt{int64(x.a.Port()), "u16"}, nil
		case "set_port", "set_ip":
			now := rsSock{x.a}
			if name == "set_port" {
				n, ok := rsOpened(first(args)).(rsInt)
				if !ok {
					return nil, undecided("a port that is not known")
				}
				now.a = netip.AddrPortFrom(x.a.Addr(), uint16(n.n))
			} else {
				ip, ok := rsOpened(first(args)).(rsIP)
				if !ok {
					return nil, undecided("an address that is not known")
				}
				now.a = netip.AddrPortFrom(ip.a, x.a.Port())
			}
			if r, ok := c.v.(*rsRef); ok {
				r.cell.v = now
			} else {
				c.v = now
			}
			return nil, nil
		case "is_ipv4", "is_ipv6":
			return x.a.Addr().Is4() == (name == "is_ipv4"), nil
		case "to_socket_addrs":
			return rsOk(rsOver([]any{x})), nil
		}
	case *rsFuture:
		switch name {
		case "wait", "now_or_never":
			return m.rsWait(x)
		}
		return x, nil
	case *rsHandle:
		switch name {
		case "join", "await":
			if x.stays {
				return nil, &exit{stays: true}
			}
			return x.v, nil
		case "is_finished":
			return !x.stays, nil
		}
		return nil, nil
	case *rsChan:
		switch name {
		case "send", "try_send", "blocking_send", "unbounded_send":
			x.queue = append(x.queue, first(args))
			return rsOk(nil), nil
		case "recv", "blocking_recv", "changed", "next":
			if len(x.queue) > 0 {
				v := x.queue[0]
				x.queue = x.queue[1:]
				return rsOk(v), nil
			}
			if len(m.calls) > 0 || m.rs().threads > 0 {
				return nil, &exit{stays: true}
			}
			return nil, undecided("what a channel gives")
		case "try_recv":
			if len(x.queue) > 0 {
				v := x.queue[0]
				x.queue = x.queue[1:]
				return rsOk(v), nil
			}
			return rsErr("TryRecvError", "receiving on an empty channel"), nil
		}
		return dontKnow("what a channel gives"), nil
	case *rsText:
		switch name {
		case "write_str", "push_str":
			t, ok := rsOpened(first(args)).(string)
			if !ok {
				return nil, undecided("a text that is not known")
			}
			x.b.WriteString(t)
			return rsOk(nil), nil
		case "pad":
			t, _ := rsOpened(first(args)).(string)
			x.b.WriteString(t)
			return rsOk(nil), nil
		case "alternate":
			return false, nil
		}
		return nil, giveUp("the method %s of a formatter", name)
	case *rsJSON:
		return m.rsJSONMethod(x, name, args, types, want, at)
	case *rsFn:
		return dontKnow("what " + name + " of a function gives"), nil
	case nil:
		return dontKnow("what " + name + " gives"), nil
	}
	return nil, giveUp("the method %s", name)
}

// rsOpaqueMethod calls a method of something outside.
func (m *machine) rsOpaqueMethod(o *opaque, name string, args []any, want *rsT, at rsAt) (any, error) {
	if o.path == "" {
		switch name {
		case "clone", "unwrap", "expect", "as_str", "as_ref", "to_string", "trim":
			return o, nil
		}
		return dontKnow(o.why), nil
	}
	switch name {
	case "unwrap", "expect", "clone", "as_ref", "as_mut", "map_err", "context", "with_context", "ok", "borrow", "lock", "into", "to_owned", "by_ref", "as_deref", "wrap_err", "inspect_err", "err_into":
		return o, nil
	case "is_ok", "is_err", "is_some", "is_none":
		if rsListener(o) {
			return name == "is_ok" || name == "is_some", nil
		}
		return dontKnow("whether " + o.path + " went well"), nil
	case "unwrap_or_else", "unwrap_or_default", "unwrap_or":
		for _, a := range args {
			if f, ok := rsOpened(a).(*rsFn); ok && f.expr != nil && rsEnds(f.expr.Kids[0]) {
				return o, nil
			}
		}
		return dontKnow("what " + o.path + " gives"), nil
	case "block_on":
		for _, a := range args {
			if _, ok := rsBare(a).(*rsFuture); ok {
				return m.rsWait(rsBare(a))
			}
			return m.rsWait(rsOpened(a))
		}
	case "spawn", "spawn_blocking", "spawn_local":
		return m.rsSpawn(first(args), at)
	case "and_then", "map":
		if f, ok := rsOpened(first(args)).(*rsFn); ok && rsListener(o) {
			return m.rsCall(f, []any{o}, want, at)
		}
	}
	return m.rsOutside(&opaque{path: o.path + "." + name, recv: o}, args, at)
}

// rsSpawn begins a thread or a task.
func (m *machine) rsSpawn(f any, at rsAt) (any, error) {
	var v any
	var err error
	switch x := rsOpened(f).(type) {
	case *rsFuture:
		v, err = m.rsWait(x)
	case *rsFn:
		if v, err = m.rsCall(x, nil, nil, at); err == nil {
			if fu, ok := v.(*rsFuture); ok {
				v, err = m.rsWait(fu)
			}
		}
	case *opaque:
		v, err = m.rsWait(x)
	}
	switch e := err.(type) {
	case nil:
		return &rsHandle{v: rsOk(v)}, nil
	case *exit:
		if e.stays {
			m.rs().threads++
			return &rsHandle{stays: true}, nil
		}
	case *thrown:
		return &rsHandle{v: rsErr("JoinError", "a panic")}, nil
	}
	return nil, err
}

// rsSharedMethod calls a method of what several have; done is false where it is one of
// what lies in it.
func (m *machine) rsSharedMethod(x *rsShared, name string, args []any, want *rsT, at rsAt) (v any, done bool, err error) {
	ref := func() any { return &rsRef{x.cell} }
	switch name {
	case "lock", "read", "write", "borrow", "borrow_mut", "get_mut", "try_lock", "try_read", "try_write", "blocking_lock", "upgrade", "as_ref", "as_mut", "deref":
		switch x.kind {
		case "OnceLock", "OnceCell":
			if name == "get_mut" {
				return rsMaybe(ref(), !x.unset), true, nil
			}
		case "Mutex", "RwLock":
			if strings.HasPrefix(name, "try") || name == "lock" || name == "read" || name == "write" || name == "get_mut" {
				return rsOk(ref()), true, nil
			}
		}
		return ref(), true, nil
	case "get":
		if x.kind == "OnceLock" || x.kind == "OnceCell" {
			return rsMaybe(x.cell.v, !x.unset), true, nil
		}
		if x.kind == "Cell" {
			return x.cell.v, true, nil
		}
	case "get_or_init", "get_or_try_init":
		if x.unset {
			if x.cell.v, err = m.rsCall(first(args), nil, want, at); err != nil {
				return nil, true, err
			}
			if f, ok := x.cell.v.(*rsFuture); ok {
				if x.cell.v, err = m.rsWait(f); err != nil {
					return nil, true, err
				}
			}
			x.unset = false
		}
		return x.cell.v, true, nil
	case "set", "store", "swap", "replace":
		old := x.cell.v
		was := x.unset
		if (x.kind == "OnceLock" || x.kind == "OnceCell") && name == "set" {
			if !was {
				return rsMade("Result", "Err", first(args)), true, nil
			}
			x.cell.v, x.unset = first(args), false
			return rsOk(nil), true, nil
		}
		x.cell.v, x.unset = rsTyped(first(args), rsTypeOf(old)), false
		if name == "swap" || name == "replace" {
			return old, true, nil
		}
		return nil, true, nil
	case "load", "into_inner":
		if name == "into_inner" && x.kind == "Mutex" {
			return rsOk(x.cell.v), true, nil
		}
		return x.cell.v, true, nil
	case "fetch_add", "fetch_sub":
		old := x.cell.v
		x.cell.v, err = m.rsOperate(map[string]string{"fetch_add": "+", "fetch_sub": "-"}[name], old, first(args))
		return old, true, err
	case "take":
		if x.kind == "Cell" || x.kind == "RefCell" {
			old := x.cell.v
			x.cell.v, err = m.rsDefault(rsTypeOf(old))
			return old, true, err
		}
	case "clone", "is_poisoned", "to_owned":
		if name == "is_poisoned" {
			return false, true, nil
		}
		return x, true, nil
	}
	if x.unset {
		return dontKnow("what is not set yet"), true, nil
	}
	return nil, false, nil
}

// rsOptional calls a method of an option or a result.
func (m *machine) rsOptional(c *rsCell, x *rsData, name string, args []any, want *rsT, at rsAt) (any, error) {
	in, well := x.holding()
	f := first(args)
	call := func(to *rsT, with ...any) (any, error) { return m.rsCall(f, with, to, at) }
	option := x.typ == "Option"
	same := func(v any) any { return rsMade(x.typ, x.variant, v) }
	fault := func() any {
		if option || len(x.fields) == 0 {
			return nil
		}
		return x.fields[0].v
	}
	switch name {
	case "unwrap", "expect", "unwrap_unchecked":
		if well {
			return in, nil
		}
		msg := "called `unwrap()` on " + rsDebug(x)
		if name == "expect" {
			msg = "expect: " + rsDebug(f)
		}
		return nil, certainly("panic", msg)
	case "unwrap_or":
		if well {
			return in, nil
		}
		return f, nil
	case "unwrap_or_else":
		if well {
			return in, nil
		}
		if option {
			return call(want)
		}
		return call(want, fault())
	case "unwrap_or_default":
		if well {
			return in, nil
		}
		if d, ok := fault().(*rsData); ok && d.typ == "VarError" {
			return "", nil
		}
		return m.rsDefault(want)
	case "unwrap_err", "expect_err":
		if !well {
			return fault(), nil
		}
		return nil, certainly("panic", name)
	case "ok":
		return rsMaybe(in, well), nil
	case "err":
		return rsMaybe(fault(), !well), nil
	case "is_some", "is_ok":
		if well {
			m.rsDropped(c, in)
		}
		return well, nil
	case "is_none", "is_err":
		if well {
			m.rsDropped(c, in)
		}
		return !well, nil
	case "is_some_and", "is_ok_and", "is_none_or":
		if !well {
			return name == "is_none_or", nil
		}
		return call(nil, in)
	case "map":
		if !well {
			return x, nil
		}
		v, err := call(want.arg(0), in)
		return same(v), err
	case "and_then":
		if !well {
			return x, nil
		}
		return call(want, in)
	case "map_or":
		if !well {
			return f, nil
		}
		return m.rsCall(at2(args, 1), []any{in}, want, at)
	case "map_or_else":
		if well {
			return m.rsCall(at2(args, 1), []any{in}, want, at)
		}
		if option {
			return call(want)
		}
		return call(want, fault())
	case "map_err":
		if well {
			return x, nil
		}
		v, err := call(want.arg(1), fault())
		return rsMade("Result", "Err", v), err
	case "or":
		if well {
			return x, nil
		}
		return f, nil
	case "or_else":
		if well {
			return x, nil
		}
		if option {
			return call(want)
		}
		return call(want, fault())
	case "and":
		if !well {
			return x, nil
		}
		return f, nil
	case "xor":
		y, _ := rsBare(f).(*rsData)
		if y == nil {
			break
		}
		if _, other := y.holding(); well == other {
			return rsNone(), nil
		} else if other {
			return y, nil
		}
		return x, nil
	case "filter":
		if !well {
			return x, nil
		}
		v, err := call(nil, in)
		if err != nil {
			return nil, err
		}
		yes, ok := rsOpened(v).(bool)
		if !ok {
			return nil, undecided("what is filtered")
		}
		return rsMaybe(in, yes), nil
	case "ok_or":
		if well {
			return rsOk(in), nil
		}
		return rsMade("Result", "Err", f), nil
	case "ok_or_else":
		if well {
			return rsOk(in), nil
		}
		v, err := call(want.arg(1))
		return rsMade("Result", "Err", v), err
	case "context", "with_context", "wrap_err", "wrap_err_with":
		if well {
			return rsOk(in), nil
		}
		if fn, ok := f.(*rsFn); ok {
			v, err := m.rsCall(fn, nil, nil, at)
			if err != nil {
				return nil, err
			}
			f = v
		}
		return rsErr("Error", rsDebug(f)), nil
	case "as_ref", "as_deref", "copied", "inspect_err", "as_slice":
		return x, nil
	case "cloned":
		return m.rsClone(x), nil
	case "inspect":
		if well {
			if _, err := call(nil, in); err != nil {
				return nil, err
			}
		}
		return x, nil
	case "as_mut", "as_deref_mut":
		if !well {
			return x, nil
		}
		return same(&rsRef{x.fields[0]}), nil
	case "flatten":
		if !well {
			return x, nil
		}
		return in, nil
	case "transpose":
		inner, ok := rsBare(in).(*rsData)
		switch {
		case option && !well:
			return rsOk(rsNone()), nil
		case option && ok && inner.variant == "Ok":
			return rsOk(rsSome(inner.fields[0].v)), nil
		case option && ok:
			return inner, nil
		case ok && inner.variant == "Some":
			return rsSome(rsOk(inner.fields[0].v)), nil
		case ok:
			return rsNone(), nil
		}
	case "iter", "into_iter", "iter_mut":
		if well {
			return rsOver([]any{in}), nil
		}
		return rsOver(nil), nil
	case "unzip":
		if l, ok := rsBare(in).(*rsList); ok && well && len(l.items) == 2 {
			return rsTupleOf(rsSome(l.items[0].v), rsSome(l.items[1].v)), nil
		}
		return rsTupleOf(rsNone(), rsNone()), nil
	case "zip":
		y, _ := rsBare(f).(*rsData)
		if y == nil {
			break
		}
		if other, ok := y.holding(); ok && well {
			return rsSome(rsTupleOf(in, other)), nil
		}
		return rsNone(), nil
	case "take", "replace", "insert", "get_or_insert", "get_or_insert_with":
		cell := c
		if r, ok := c.v.(*rsRef); ok {
			cell = r.cell
		}
		switch name {
		case "take":
			cell.v = rsNone()
			return x, nil
		case "replace":
			cell.v = rsSome(f)
			return x, nil
		case "insert":
			d := rsSome(f).(*rsData)
			cell.v = d
			return &rsRef{d.fields[0]}, nil
		}
		if !well {
			v := f
			if name == "get_or_insert_with" {
				var err error
				if v, err = call(nil); err != nil {
					return nil, err
				}
			}
			x = rsSome(v).(*rsData)
			cell.v = x
		}
		return &rsRef{x.fields[0]}, nil
	}
	if o, ok := in.(*opaque); ok && well { // of a future that is waited for and its like
		return m.rsOpaqueMethod(o, name, args, want, at)
	}
	return nil, giveUp("the method %s of an option", name)
}

// rsDropped takes back a listener that was made only to see whether it can be.
func (m *machine) rsDropped(c *rsCell, in any) {
	o, ok := rsBare(in).(*opaque)
	if !ok || !rsListener(o) || len(m.calls) == 0 {
		return
	}
	m.calls = m.calls[:len(m.calls)-1]
}

func (m *machine) rsOrdering(x *rsData, name string, args []any, at rsAt) (any, error) {
	n := map[string]int{"Less": -1, "Greater": 1}[x.variant]
	switch name {
	case "reverse":
		return rsMade("Ordering", []string{"Less", "Equal", "Greater"}[1-n]), nil
	case "then":
		if n == 0 {
			return first(args), nil
		}
		return x, nil
	case "then_with":
		if n == 0 {
			return m.rsCall(first(args), nil, nil, at)
		}
		return x, nil
	case "is_eq", "is_ne", "is_lt", "is_gt", "is_le", "is_ge":
		return map[string]bool{"is_eq": n == 0, "is_ne": n != 0, "is_lt": n < 0, "is_gt": n > 0, "is_le": n <= 0, "is_ge": n >= 0}[name], nil
	}
	return nil, giveUp("the method %s of an order", name)
}

func (m *machine) rsEntry(x *rsData, name string, args []any, at rsAt) (any, error) {
	mp, key := x.fields[0].v.(*rsMap), x.fields[1].v
	c, ok := mp.cell(key)
	if !ok {
		return nil, undecided("a key that is not known")
	}
	switch name {
	case "or_insert", "or_insert_with", "or_default", "or_insert_with_key":
		if c == nil {
			v := first(args)
			if name == "or_default" {
				v = &rsList{}
			} else if name != "or_insert" {
				var err error
				if v, err = m.rsCall(v, nil, nil, at); err != nil {
					return nil, err
				}
			}
			mp.put(key, v)
			c, _ = mp.cell(key)
		}
		return &rsRef{c}, nil
	case "and_modify":
		if c != nil {
			if _, err := m.rsCall(first(args), []any{&rsRef{c}}, nil, at); err != nil {
				return nil, err
			}
		}
		return x, nil
	}
	return nil, giveUp("the method %s of a map's entry", name)
}

func (m *machine) rsRangeMethod(x *rsData, name string, args []any, types []*rsT, want *rsT, at rsAt) (any, error) {
	switch name {
	case "contains":
		v := rsOpened(first(args))
		if !known(v) {
			return dontKnow("whether a range holds it"), nil
		}
		lo, hi := x.fields[0].v, x.fields[1].v
		if lo != nil {
			if c, ok := rsCompare(v, lo); !ok || c < 0 {
				return false, nil
			}
		}
		if hi != nil {
			c, ok := rsCompare(v, hi)
			return ok && (c < 0 || c == 0 && x.variant == "..="), nil
		}
		return true, nil
	case "start", "end":
		return x.fields[map[string]int{"start": 0, "end": 1}[name]].v, nil
	}
	it, err := m.rsIterate(x, at)
	if err != nil || it == nil {
		return nil, err
	}
	return m.rsIterMethod(it, name, args, types, want, nil, at)
}

func rsIPMethod(x rsIP, name string) (any, error) {
	switch name {
	case "is_loopback":
		return x.a.IsLoopback(), nil
	case "is_unspecified":
		return x.a.IsUnspecified(), nil
	case "is_ipv4":
		return x.a.Is4(), nil
	case "is_ipv6":
		return !x.a.Is4(), nil
	case "is_private":
		return x.a.IsPrivate(), nil
	case "is_multicast":
		return x.a.IsMulticast(), nil
	case "octets":
		l := &rsList{}
		for _, b := range x.a.AsSlice() {
			l.items = append(l.items, &rsCell{v: rsInt{int64(b), "u8"}})
		}
		return l, nil
	case "to_canonical":
		return rsIP{x.a.Unmap()}, nil
	}
	return nil, giveUp("the method %s of an address", name)
}

func rsCharMethod(x character, name string, args []any) (any, error) {
	r := rune(x)
	switch name {
	case "is_ascii_digit", "is_numeric":
		return unicode.IsDigit(r), nil
	case "is_digit":
		return unicode.IsDigit(r), nil
	case "is_alphabetic", "is_ascii_alphabetic":
		return unicode.IsLetter(r), nil
	case "is_alphanumeric", "is_ascii_alphanumeric":
		return unicode.IsLetter(r) || unicode.IsDigit(r), nil
	case "is_whitespace", "is_ascii_whitespace":
		return unicode.IsSpace(r), nil
	case "is_uppercase", "is_ascii_uppercase":
		return unicode.IsUpper(r), nil
	case "is_lowercase", "is_ascii_lowercase":
		return unicode.IsLower(r), nil
	case "is_ascii_punctuation":
		return r < 128 && (unicode.IsPunct(r) || unicode.IsSymbol(r)), nil
	case "to_ascii_uppercase":
		return character(unicode.ToUpper(r)), nil
	case "to_ascii_lowercase":
		return character(unicode.ToLower(r)), nil
	case "to_uppercase", "to_lowercase":
		if name == "to_uppercase" {
			r = unicode.ToUpper(r)
		} else {
			r = unicode.ToLower(r)
		}
		return rsOver([]any{character(r)}), nil
	case "to_digit":
		base, ok := rsOpened(first(args)).(rsInt)
		if !ok {
			break
		}
		n, err := strconv.ParseInt(string(r), int(max(2, min(base.n, 36))), 32)
		return rsMaybe(rsInt{n, "u32"}, err == nil), nil
	case "len_utf8":
		return rsInt{int64(len(string(r))), "usize"}, nil
	}
	return nil, giveUp("the method %s of a character", name)
}

func (m *machine) rsIntMethod(x rsInt, name string, args []any) (any, error) {
	y, _ := rsOpened(first(args)).(rsInt)
	if o, ok := rsOpened(first(args)).(*opaque); ok && len(args) > 0 {
		return dontKnow("what is made of " + o.String()), nil
	}
	t := x.t
	if t == "" {
		t = y.t
	}
	ops := map[string]string{"add": "+", "sub": "-", "mul": "*", "div": "/", "rem": "%"}
	kind, what, _ := strings.Cut(name, "_")
	switch {
	case (kind == "checked" || kind == "saturating" || kind == "wrapping" || kind == "overflowing") && ops[what] != "":
		n, ok := rsArithmetic(ops[what], x.n, y.n)
		fits := ok && rsFits(n, t)
		switch {
		case kind == "checked":
			return rsMaybe(rsInt{n, t}, fits), nil
		case fits:
			return rsInt{n, t}, nil
		case !ok:
			return dontKnow("a number that is too large"), nil
		case kind == "wrapping":
			return rsWrapped(n, t), nil
		case kind == "saturating":
			edge := "MAX"
			if n < x.n {
				edge = "MIN"
			}
			if v := rsConstant(t + "." + edge); v != nil {
				return v, nil
			}
		}
		return dontKnow("a number that does not fit"), nil
	}
	switch name {
	case "min":
		return rsInt{min(x.n, y.n), t}, nil
	case "max":
		return rsInt{max(x.n, y.n), t}, nil
	case "clamp":
		hi, _ := rsOpened(at2(args, 1)).(rsInt)
		return rsInt{max(y.n, min(x.n, hi.n)), t}, nil
	case "abs":
		return rsInt{max(x.n, -x.n), t}, nil
	case "pow":
		n := int64(1)
		for range min(y.n, 64) {
			var ok bool
			if n, ok = rsArithmetic("*", n, x.n); !ok {
				return dontKnow("a number that is too large"), nil
			}
		}
		if !rsFits(n, x.t) {
			return nil, undecided("a number that %s does not hold", x.t)
		}
		return rsInt{n, x.t}, nil
	case "is_positive":
		return x.n > 0, nil
	case "is_negative":
		return x.n < 0, nil
	case "rem_euclid":
		if y.n == 0 {
			return nil, certainly("panic", "a division by zero")
		}
		return rsInt{((x.n % y.n) + y.n) % y.n, t}, nil
	case "get": // of NonZero
		return x, nil
	case "to_be_bytes":
		w := rsWidth[x.t]
		if w <= 0 {
			break
		}
		l := &rsList{}
		for i := w - 8; i >= 0; i -= 8 {
			l.items = append(l.items, &rsCell{v: rsInt{x.n >> i & 255, "u8"}})
		}
		return l, nil
	case "is_ascii_digit", "is_ascii_alphabetic", "is_ascii_alphanumeric":
		return rsCharMethod(character(rune(x.n)), name, nil)
	}
	return nil, giveUp("the method %s of a number", name)
}

func (m *machine) rsTextMethod(c *rsCell, x string, name string, args []any, types []*rsT, want *rsT, at rsAt) (any, error) {
	cell := c
	for r, ok := cell.v.(*rsRef); ok; r, ok = cell.v.(*rsRef) {
		cell = r.cell
	}
	if sh, ok := cell.v.(*rsShared); ok {
		cell = sh.cell
	}
	arg := rsOpened(first(args))
	if o, ok := arg.(*opaque); ok && len(args) > 0 {
		if name == "push_str" || name == "push" || name == "insert_str" {
			cell.v = dontKnow("a text with " + o.String())
			return nil, nil
		}
		return dontKnow("what is made of " + o.String()), nil
	}
	text, isText := arg.(string)
	if ch, ok := arg.(character); ok {
		text, isText = string(rune(ch)), true
	}
	// A pattern: a text, a character, several of them, or a function.
	fits := func(r rune) (bool, error) {
		switch p := arg.(type) {
		case *rsList:
			for _, e := range p.items {
				if rsOpened(e.v) == any(character(r)) {
					return true, nil
				}
			}
			return false, nil
		case *rsFn:
			v, err := m.rsCall(p, []any{character(r)}, nil, at)
			yes, ok := rsOpened(v).(bool)
			if err == nil && !ok {
				err = undecided("a pattern of a text")
			}
			return yes, err
		}
		return string(r) == text, nil
	}
	find := func(s string) (i, n int, err error) {
		if isText {
			return strings.Index(s, text), len(text), nil
		}
		for i, r := range s {
			ok, err := fits(r)
			if ok || err != nil {
				return i, len(string(r)), err
			}
		}
		return -1, 0, nil
	}
	texts := func(list []string) any {
		l := make([]any, 0, len(list))
		for _, t := range list {
			l = append(l, t)
		}
		return rsOver(l)
	}
	set := func(t string) (any, error) {
		if len(t) > maxText {
			return nil, spent("a text that grows")
		}
		cell.v = t
		return nil, m.use(len(t))
	}
	switch name {
	case "parse":
		t := want.arg(0)
		if len(types) > 0 && types[0] != nil {
			t = types[0]
		}
		return m.rsParse(x, t, at)
	case "len":
		return rsInt{int64(len(x)), "usize"}, nil
	case "is_empty":
		return x == "", nil
	case "trim":
		return strings.TrimSpace(x), nil
	case "trim_start", "trim_left":
		return strings.TrimLeftFunc(x, unicode.IsSpace), nil
	case "trim_end", "trim_right":
		return strings.TrimRightFunc(x, unicode.IsSpace), nil
	case "to_lowercase", "to_ascii_lowercase":
		return strings.ToLower(x), nil
	case "to_uppercase", "to_ascii_uppercase":
		return strings.ToUpper(x), nil
	case "eq_ignore_ascii_case":
		return strings.EqualFold(x, text), nil
	case "to_str":
		return rsSome(x), nil
	case "into_bytes":
		return x, nil
	case "to_socket_addrs":
		a, err := netip.ParseAddrPort(x)
		if err != nil {
			return dontKnow("what a name stands for"), nil
		}
		return rsOk(rsOver([]any{rsSock{a}})), nil
	case "starts_with", "ends_with", "contains", "find", "rfind":
		if name == "starts_with" && isText {
			return strings.HasPrefix(x, text), nil
		}
		if name == "ends_with" && isText {
			return strings.HasSuffix(x, text), nil
		}
		if name == "rfind" && isText {
			i := strings.LastIndex(x, text)
			return rsMaybe(rsInt{int64(i), "usize"}, i >= 0), nil
		}
		i, _, err := find(x)
		if err != nil {
			return nil, err
		}
		switch name {
		case "contains":
			return i >= 0, nil
		case "find":
			return rsMaybe(rsInt{int64(i), "usize"}, i >= 0), nil
		case "starts_with":
			return i == 0 && x != "", nil
		}
	case "strip_prefix":
		if isText {
			rest, ok := strings.CutPrefix(x, text)
			return rsMaybe(rest, ok), nil
		}
		if i, n, err := find(x); err == nil {
			if i == 0 {
				return rsSome(x[n:]), nil
			}
			return rsNone(), nil
		}
	case "strip_suffix":
		if isText {
			rest, ok := strings.CutSuffix(x, text)
			return rsMaybe(rest, ok), nil
		}
	case "trim_start_matches", "trim_end_matches", "trim_matches":
		if isText {
			for text != "" && name != "trim_end_matches" && strings.HasPrefix(x, text) {
				x = x[len(text):]
			}
			for text != "" && name != "trim_start_matches" && strings.HasSuffix(x, text) {
				x = x[:len(x)-len(text)]
			}
			return x, nil
		}
		var err error
		cut := func(r rune) bool {
			ok, e := fits(r)
			if e != nil {
				err = e
			}
			return ok
		}
		if name != "trim_end_matches" {
			x = strings.TrimLeftFunc(x, cut)
		}
		if name != "trim_start_matches" {
			x = strings.TrimRightFunc(x, cut)
		}
		return x, err
	case "split", "split_terminator", "rsplit":
		var parts []string
		rest := x
		for len(parts) < maxItems {
			i, n, err := find(rest)
			if err != nil {
				return nil, err
			}
			if i < 0 || n == 0 {
				break
			}
			parts = append(parts, rest[:i])
			rest = rest[i+n:]
		}
		parts = append(parts, rest)
		if name == "split_terminator" && rest == "" {
			parts = parts[:len(parts)-1]
		}
		if name == "rsplit" {
			slices.Reverse(parts)
		}
		return texts(parts), m.use(len(x))
	case "splitn", "rsplitn":
		n, _ := arg.(rsInt)
		sep, ok := rsOpened(at2(args, 1)).(string)
		if ch, isChar := rsOpened(at2(args, 1)).(character); isChar {
			sep, ok = string(rune(ch)), true
		}
		if !ok {
			break
		}
		if name == "rsplitn" && n.n == 2 {
			if a, b, cut := cutLast(x, sep); cut {
				return texts([]string{b, a}), nil
			}
			return texts([]string{x}), nil
		}
		return texts(strings.SplitN(x, sep, int(n.n))), nil
	case "split_whitespace", "split_ascii_whitespace":
		return texts(strings.Fields(x)), nil
	case "lines":
		t := strings.TrimSuffix(x, "\n")
		if t == "" {
			return rsOver(nil), nil
		}
		list := strings.Split(t, "\n")
		for i := range list {
			list[i] = strings.TrimSuffix(list[i], "\r")
		}
		return texts(list), m.use(len(x))
	case "split_once", "rsplit_once":
		if isText {
			a, b, ok := strings.Cut(x, text)
			if name == "rsplit_once" {
				a, b, ok = cutLast(x, text)
			}
			return rsMaybe(rsTupleOf(a, b), ok), nil
		}
		i, n, err := find(x)
		if err != nil || i < 0 {
			return rsNone(), err
		}
		return rsSome(rsTupleOf(x[:i], x[i+n:])), nil
	case "split_at":
		if n, ok := arg.(rsInt); ok && n.n >= 0 && int(n.n) <= len(x) {
			return rsTupleOf(x[:n.n], x[n.n:]), nil
		}
	case "replace":
		to, ok := rsOpened(at2(args, 1)).(string)
		if isText && ok {
			out := strings.ReplaceAll(x, text, to)
			if len(out) > maxText {
				return nil, spent("a text that grows")
			}
			return out, m.use(len(out))
		}
	case "replacen":
		to, ok := rsOpened(at2(args, 1)).(string)
		n, _ := rsOpened(at2(args, 2)).(rsInt)
		if isText && ok {
			return strings.Replace(x, text, to, int(n.n)), nil
		}
	case "repeat":
		if n, ok := arg.(rsInt); ok && n.n >= 0 && n.n*int64(len(x)) < maxText {
			return strings.Repeat(x, int(n.n)), m.use(int(n.n) * len(x))
		}
	case "chars":
		var l []any
		for _, r := range x {
			l = append(l, character(r))
		}
		return rsOver(l), m.use(len(x))
	case "char_indices":
		var l []any
		for i, r := range x {
			l = append(l, rsTupleOf(rsInt{int64(i), "usize"}, character(r)))
		}
		return rsOver(l), m.use(len(x))
	case "bytes", "iter":
		var l []any
		for i := range len(x) {
			l = append(l, rsInt{int64(x[i]), "u8"})
		}
		return rsOver(l), m.use(len(x))
	case "matches":
		if isText && text != "" {
			n := strings.Count(x, text)
			return texts(slices.Repeat([]string{text}, min(n, maxItems))), nil
		}
	case "get":
		if d, ok := arg.(*rsData); ok {
			at, err := m.rsSlice(d, len(x))
			if _, out := err.(*thrown); out {
				return rsNone(), nil
			}
			return rsSome(x[at[0]:at[1]]), err
		}
	case "push_str":
		return set(x + text)
	case "push":
		return set(x + text)
	case "insert_str", "insert":
		t, ok := rsOpened(at2(args, 1)).(string)
		if ch, isChar := rsOpened(at2(args, 1)).(character); isChar {
			t, ok = string(rune(ch)), true
		}
		if n, is := arg.(rsInt); is && ok && n.n >= 0 && int(n.n) <= len(x) {
			return set(x[:n.n] + t + x[n.n:])
		}
	case "clear":
		return set("")
	case "truncate":
		if n, ok := arg.(rsInt); ok && n.n >= 0 {
			return set(x[:min(int(n.n), len(x))])
		}
	case "pop":
		if x == "" {
			return rsNone(), nil
		}
		r := []rune(x)
		_, err := set(string(r[:len(r)-1]))
		return rsSome(character(r[len(r)-1])), err
	case "to_vec":
		return x, nil
	case "is_char_boundary":
		return true, nil
	case "is_ascii":
		for i := range len(x) {
			if x[i] >= 0x80 {
				return false, nil
			}
		}
		return true, nil
	case "write_fmt", "write_str":
		if isText {
			_, err := set(x + text)
			return rsOk(nil), err
		}
	// of a path
	case "join":
		if strings.HasPrefix(text, "/") {
			return text, nil
		}
		return strings.TrimSuffix(x, "/") + "/" + text, nil
	case "exists", "is_file", "is_dir":
		if strings.HasPrefix(x, "/") {
			if _, in := m.treePath(x); !in {
				return dontKnow("whether " + x + " is there"), nil
			}
		}
		return m.there(x, name != "is_dir", name != "is_file"), nil
	case "display":
		return x, nil
	case "file_name", "parent", "extension", "file_stem":
		return rsPathPart(x, name), nil
	case "is_absolute":
		return strings.HasPrefix(x, "/"), nil
	case "is_relative":
		return !strings.HasPrefix(x, "/"), nil
	case "to_owned":
		return x, nil
	case "capacity", "reserve", "shrink_to_fit":
		return nil, nil
	}
	return nil, giveUp("the method %s of a text", name)
}

func rsPathPart(x, name string) any {
	dir, base, cut := cutLast(strings.TrimSuffix(x, "/"), "/")
	if !cut {
		dir, base = "", x
	}
	stem, ext, dotted := cutLast(base, ".")
	if stem == "" {
		stem, ext, dotted = base, "", false
	}
	switch name {
	case "file_name":
		return rsMaybe(base, base != "")
	case "parent":
		return rsMaybe(dir, x != "" && x != "/")
	case "extension":
		return rsMaybe(ext, dotted)
	}
	return rsMaybe(stem, base != "")
}

func (m *machine) rsListMethod(x *rsList, name string, args []any, types []*rsT, want *rsT, s *rsScope, at rsAt) (any, error) {
	arg := first(args)
	n, isInt := rsOpened(arg).(rsInt)
	some := func(i int) any {
		if i < 0 || i >= len(x.items) {
			return rsNone()
		}
		return rsSome(x.items[i].v)
	}
	mut := func(i int) any {
		if i < 0 || i >= len(x.items) {
			return rsNone()
		}
		return rsSome(&rsRef{x.items[i]})
	}
	index := func(v any) (int, error) {
		for i, c := range x.items {
			k, ok := rsCompare(c.v, v)
			if !ok {
				return -1, undecided("what a list holds")
			}
			if k == 0 {
				return i, nil
			}
		}
		return -1, nil
	}
	if x.tuple {
		if name == "into_iter" || name == "to_socket_addrs" {
			if name == "to_socket_addrs" && len(x.items) == 2 {
				host := x.items[0].v
				if t, ok := rsOpened(host).(string); ok {
					a, err := netip.ParseAddr(t)
					if err != nil {
						return dontKnow("what a name stands for"), nil
					}
					host = rsIP{a}
				}
				return rsOk(rsOver([]any{m.rsSocket(host, x.items[1].v)})), nil
			}
		}
		return nil, giveUp("the method %s of a tuple", name)
	}
	switch name {
	case "len":
		return rsInt{int64(len(x.items)), "usize"}, nil
	case "is_empty":
		return len(x.items) == 0, nil
	case "push", "push_back", "insert", "push_front":
		v := arg
		at := len(x.items)
		if x.set {
			i, err := index(v)
			if err != nil || i >= 0 {
				return false, err
			}
		} else if name == "insert" {
			if !isInt || n.n < 0 || int(n.n) > len(x.items) {
				break
			}
			at, v = int(n.n), at2(args, 1)
		} else if name == "push_front" {
			at = 0
		}
		if len(x.items) > maxItems {
			return nil, spent("a list that grows")
		}
		x.items = slices.Insert(x.items, at, &rsCell{v: v})
		return true, m.use(1)
	case "pop", "pop_back":
		v := some(len(x.items) - 1)
		x.items = x.items[:max(0, len(x.items)-1)]
		return v, nil
	case "pop_front":
		v := some(0)
		x.items = x.items[min(1, len(x.items)):]
		return v, nil
	case "first", "front":
		return some(0), nil
	case "last", "back":
		return some(len(x.items) - 1), nil
	case "first_mut", "front_mut":
		return mut(0), nil
	case "last_mut", "back_mut":
		return mut(len(x.items) - 1), nil
	case "get", "get_mut":
		if isInt && name == "get" {
			return some(int(n.n)), nil
		}
		if isInt {
			return mut(int(n.n)), nil
		}
		if d, ok := rsOpened(arg).(*rsData); ok && d.typ == "Range" {
			ends, err := m.rsSlice(d, len(x.items))
			if _, out := err.(*thrown); out {
				return rsNone(), nil
			}
			if err != nil {
				return nil, err
			}
			return rsSome(&rsList{items: x.items[ends[0]:ends[1]]}), nil
		}
	case "split_first", "split_last":
		if len(x.items) == 0 {
			return rsNone(), nil
		}
		if name == "split_first" {
			return rsSome(rsTupleOf(x.items[0].v, &rsList{items: x.items[1:]})), nil
		}
		return rsSome(rsTupleOf(x.items[len(x.items)-1].v, &rsList{items: x.items[:len(x.items)-1]})), nil
	case "contains":
		i, err := index(arg)
		return i >= 0, err
	case "remove", "swap_remove":
		if x.set {
			i, err := index(arg)
			if err != nil || i < 0 {
				return false, err
			}
			x.items = slices.Delete(x.items, i, i+1)
			return true, nil
		}
		if !isInt || n.n < 0 || int(n.n) >= len(x.items) {
			return nil, certainly("panic", "an index out of bounds")
		}
		v := x.items[n.n].v
		x.items = slices.Delete(x.items, int(n.n), int(n.n)+1)
		return v, nil
	case "clear":
		x.items = nil
		return nil, nil
	case "truncate":
		if isInt {
			x.items = x.items[:min(int(n.n), len(x.items))]
			return nil, nil
		}
	case "extend", "append", "extend_from_slice":
		it, err := m.rsIterate(arg, at)
		if err != nil {
			return nil, err
		}
		if it == nil {
			return nil, undecided("a list that is not known")
		}
		vs, err := m.rsRest(it)
		if err != nil {
			return nil, err
		}
		for _, v := range vs {
			x.items = append(x.items, &rsCell{v: v})
		}
		if l, ok := rsOpened(arg).(*rsList); ok && name == "append" {
			l.items = nil
		}
		return nil, nil
	case "join", "concat":
		sep, _ := rsOpened(arg).(string)
		var parts []string
		for _, c := range x.items {
			t, ok := rsOpened(c.v).(string)
			if !ok {
				return dontKnow("what is joined"), nil
			}
			parts = append(parts, t)
		}
		out := strings.Join(parts, sep)
		if len(out) > maxText {
			return nil, spent("a text that grows")
		}
		return out, m.use(len(out))
	case "sort", "sort_unstable":
		slices.SortStableFunc(x.items, func(a, b *rsCell) int { c, _ := rsCompare(a.v, b.v); return c })
		return nil, nil
	case "sort_by", "sort_by_key", "sort_unstable_by", "sort_unstable_by_key":
		var bad error
		slices.SortStableFunc(x.items, func(a, b *rsCell) int {
			if bad != nil {
				return 0
			}
			if strings.HasSuffix(name, "key") {
				ka, err := m.rsCall(arg, []any{a.v}, nil, at)
				kb, err2 := m.rsCall(arg, []any{b.v}, nil, at)
				if err != nil || err2 != nil {
					bad = giveUp("how a list is sorted")
				}
				c, _ := rsCompare(ka, kb)
				return c
			}
			v, err := m.rsCall(arg, []any{a.v, b.v}, nil, at)
			if d, ok := v.(*rsData); ok && err == nil {
				return map[string]int{"Less": -1, "Greater": 1}[d.variant]
			}
			bad = giveUp("how a list is sorted")
			return 0
		})
		return nil, bad
	case "reverse":
		slices.Reverse(x.items)
		return nil, nil
	case "dedup":
		x.items = slices.CompactFunc(x.items, func(a, b *rsCell) bool { c, ok := rsCompare(a.v, b.v); return ok && c == 0 })
		return nil, nil
	case "swap":
		b, ok := rsOpened(at2(args, 1)).(rsInt)
		if isInt && ok && int(n.n) < len(x.items) && int(b.n) < len(x.items) {
			x.items[n.n].v, x.items[b.n].v = x.items[b.n].v, x.items[n.n].v
			return nil, nil
		}
	case "retain":
		var kept []*rsCell
		for _, c := range x.items {
			v, err := m.rsCall(arg, []any{c.v}, nil, at)
			if err != nil {
				return nil, err
			}
			yes, ok := rsOpened(v).(bool)
			if !ok {
				return nil, undecided("what is kept of a list")
			}
			if yes {
				kept = append(kept, c)
			}
		}
		x.items = kept
		return nil, nil
	case "starts_with":
		l, ok := rsOpened(arg).(*rsList)
		if ok && len(l.items) <= len(x.items) {
			c, known := rsCompare(l, &rsList{items: x.items[:len(l.items)]})
			if known {
				return c == 0, nil
			}
		}
		return false, nil
	case "iter_mut":
		l := make([]any, len(x.items))
		for i, c := range x.items {
			l[i] = &rsRef{c}
		}
		return rsOver(l), nil
	case "drain":
		l := x.values()
		x.items = nil
		return rsOver(l), nil
	case "to_vec":
		return m.rsClone(x), nil
	case "chunks", "windows":
		if !isInt || n.n <= 0 {
			break
		}
		var l []any
		for i := 0; i < len(x.items); i++ {
			if name == "chunks" && i%int(n.n) != 0 || name == "windows" && i+int(n.n) > len(x.items) {
				continue
			}
			l = append(l, &rsList{items: x.items[i:min(len(x.items), i+int(n.n))]})
		}
		return rsOver(l), nil
	case "to_socket_addrs":
		return rsOk(rsOver(x.values())), nil
	case "reserve", "shrink_to_fit":
		return nil, nil
	}
	return m.rsIterMethod(rsOver(x.values()), name, args, types, want, s, at)
}

func (m *machine) rsMapMethod(x *rsMap, name string, args []any, types []*rsT, want *rsT, s *rsScope, at rsAt) (any, error) {
	arg := first(args)
	switch name {
	case "get", "get_mut", "contains_key", "remove":
		c, ok := x.cell(arg)
		if !ok {
			return dontKnow("what a map holds"), nil
		}
		switch {
		case name == "contains_key":
			return c != nil, nil
		case c == nil:
			return rsNone(), nil
		case name == "get":
			return rsSome(c.v), nil
		case name == "get_mut":
			return rsSome(&rsRef{c}), nil
		}
		v, _ := x.remove(arg)
		return rsSome(v), nil
	case "insert":
		old, had, ok := x.put(arg, at2(args, 1))
		if !ok {
			return nil, undecided("a key that is not known")
		}
		return rsMaybe(old, had), m.use(1)
	case "entry":
		return &rsData{typ: "Entry", fields: []*rsCell{{v: x}, {v: arg}}}, nil
	case "len":
		return rsInt{int64(len(x.keys)), "usize"}, nil
	case "is_empty":
		return len(x.keys) == 0, nil
	case "keys", "into_keys", "values", "into_values", "values_mut":
		var l []any
		for _, k := range x.keys {
			c, _ := x.cell(k)
			switch {
			case strings.HasSuffix(name, "keys"):
				l = append(l, k)
			case name == "values_mut":
				l = append(l, &rsRef{c})
			default:
				l = append(l, c.v)
			}
		}
		return rsOver(l), nil
	case "extend":
		it, err := m.rsIterate(arg, at)
		if err != nil || it == nil {
			return nil, undecided("a map that is not known")
		}
		vs, err := m.rsRest(it)
		for _, v := range vs {
			if kv, ok := rsBare(v).(*rsList); ok && len(kv.items) == 2 {
				x.put(kv.items[0].v, kv.items[1].v)
			}
		}
		return nil, err
	case "clear":
		*x = *newRsMap(x.by)
		return nil, nil
	}
	it, err := m.rsIterate(x, at)
	if err != nil {
		return nil, err
	}
	if name == "iter_mut" {
		var l []any
		for _, k := range x.keys {
			c, _ := x.cell(k)
			l = append(l, rsTupleOf(k, &rsRef{c}))
		}
		return rsOver(l), nil
	}
	return m.rsIterMethod(it, name, args, types, want, s, at)
}

// rsIterate is what goes through a value; nil where that is not known.
func (m *machine) rsIterate(v any, at rsAt) (*rsIter, error) {
	_, byRef := v.(*rsRef)
	switch x := rsOpened(v).(type) {
	case *rsIter:
		return x, nil
	case *rsList:
		if byRef {
			l := make([]any, len(x.items))
			for i, c := range x.items {
				l[i] = &rsRef{c}
			}
			return rsOver(l), nil
		}
		return rsOver(x.values()), nil
	case *rsMap:
		var l []any
		for _, k := range x.keys {
			c, _ := x.cell(k)
			if byRef {
				l = append(l, rsTupleOf(k, &rsRef{c}))
			} else {
				l = append(l, rsTupleOf(k, c.v))
			}
		}
		return rsOver(l), nil
	case *rsData:
		switch {
		case x.typ == "Option" || x.typ == "Result":
			if in, ok := x.holding(); ok {
				return rsOver([]any{in}), nil
			}
			return rsOver(nil), nil
		case x.typ == "Range":
			lo, isInt := x.fields[0].v.(rsInt)
			hi, bounded := x.fields[1].v.(rsInt)
			if !isInt {
				if a, ok := x.fields[0].v.(character); ok {
					b, _ := x.fields[1].v.(character)
					var l []any
					for r := a; r < b || r == b && x.variant == "..="; r++ {
						l = append(l, r)
					}
					return rsOver(l), nil
				}
				break
			}
			if x.variant == "..=" {
				hi.n++
			}
			n := lo.n
			return &rsIter{next: func() (any, bool, error) {
				if err := m.step(); err != nil {
					return nil, false, err
				}
				if bounded && n >= hi.n {
					return nil, false, nil
				}
				n++
				return rsInt{n - 1, lo.t}, true, nil
			}}, nil
		case x.def != nil && len(x.def.methods["next"]) > 0:
			meth := x.def.methods["next"][0]
			return &rsIter{next: func() (any, bool, error) {
				v, err := m.rsMethodCall(meth, &rsRef{&rsCell{v: x}}, nil, nil, nil, at)
				if err != nil {
					return nil, false, err
				}
				d, ok := rsBare(v).(*rsData)
				if !ok {
					return nil, false, undecided("what comes next")
				}
				in, more := d.holding()
				return in, more, nil
			}}, nil
		case x.def != nil && len(x.def.methods["into_iter"]) > 0:
			w, err := m.rsMethodCall(x.def.methods["into_iter"][0], x, nil, nil, nil, at)
			if err != nil {
				return nil, err
			}
			return m.rsIterate(w, at)
		}
	case *rsChan:
		return &rsIter{next: func() (any, bool, error) {
			if len(x.queue) > 0 {
				v := x.queue[0]
				x.queue = x.queue[1:]
				return v, true, nil
			}
			if len(m.calls) > 0 || m.rs().threads > 0 {
				return nil, false, &exit{stays: true}
			}
			return nil, false, nil
		}}, nil
	case *rsJSON:
		l, err := m.rsJSONItems(x)
		return l, err
	case *opaque:
		return nil, nil
	}
	return nil, giveUp("going through a value")
}

// rsRest are the values that are left.
func (m *machine) rsRest(it *rsIter) (list []any, err error) {
	for {
		v, ok, err := it.take()
		if err != nil || !ok {
			return list, err
		}
		if list = append(list, v); len(list) > maxItems {
			return nil, spent("a list without an end")
		}
		if err := m.step(); err != nil {
			return nil, err
		}
	}
}

func (m *machine) rsIterMethod(x *rsIter, name string, args []any, types []*rsT, want *rsT, s *rsScope, at rsAt) (any, error) {
	arg := first(args)
	test := func(v any) (bool, error) {
		r, err := m.rsCall(arg, []any{v}, nil, at)
		if err != nil {
			return false, err
		}
		yes, ok := rsOpened(r).(bool)
		if !ok {
			return false, undecided("a condition that is not known")
		}
		return yes, nil
	}
	var item, maybe *rsT // what one value is to be
	if want.is("Iterator") && want.arg(0) != nil {
		item = want.arg(0)
		maybe = &rsT{name: "Option", args: want.args}
	} else if name == "find_map" {
		maybe = want
	}
	optional := func(v any) (any, bool, error) {
		r, err := m.rsCall(arg, []any{v}, maybe, at)
		if err != nil {
			return nil, false, err
		}
		d, ok := rsBare(r).(*rsData)
		if !ok {
			return nil, false, undecided("what is taken of a list")
		}
		in, well := d.holding()
		return in, well, nil
	}
	count := func() int {
		n, _ := rsOpened(arg).(rsInt)
		return int(n.n)
	}
	lazy := func(next func() (any, bool, error)) (any, error) { return &rsIter{next: next}, nil }
	switch name {
	case "iter", "into_iter", "by_ref", "iter_mut", "into_par_iter", "copied", "fuse", "drain":
		return x, nil
	case "cloned":
		return lazy(func() (any, bool, error) {
			v, ok, err := x.take()
			return m.rsClone(v), ok, err
		})
	case "peekable":
		return x, nil
	case "next":
		v, ok, err := x.take()
		return rsMaybe(v, ok), err
	case "peek":
		if len(x.ahead) == 0 {
			v, ok, err := x.next()
			if err != nil || !ok {
				return rsNone(), err
			}
			x.ahead = append(x.ahead, v)
		}
		return rsSome(x.ahead[0]), nil
	case "next_if", "next_if_eq":
		v, ok, err := x.take()
		if err != nil || !ok {
			return rsNone(), err
		}
		x.ahead = append([]any{v}, x.ahead...)
		yes := false
		if name == "next_if_eq" {
			c, _ := rsCompare(v, arg)
			yes = c == 0
		} else if yes, err = test(v); err != nil {
			return nil, err
		}
		if yes {
			x.ahead = x.ahead[1:]
		}
		return rsMaybe(v, yes), nil
	case "next_back", "rev", "last", "rposition":
		l, err := m.rsRest(x)
		if err != nil {
			return nil, err
		}
		switch {
		case name == "rev":
			slices.Reverse(l)
			return rsOver(l), nil
		case len(l) == 0:
			return rsNone(), nil
		case name == "next_back":
			*x = *rsOver(l[:len(l)-1])
		case name == "rposition":
			for i := len(l) - 1; i >= 0; i-- {
				if yes, err := test(l[i]); yes || err != nil {
					return rsSome(rsInt{int64(i), "usize"}), err
				}
			}
			return rsNone(), nil
		}
		return rsSome(l[len(l)-1]), nil
	case "skip", "nth", "step_by":
		n := count()
		for range n {
			if name == "step_by" {
				break
			}
			if _, ok, err := x.take(); err != nil || !ok {
				break
			}
		}
		switch name {
		case "nth":
			v, ok, err := x.take()
			return rsMaybe(v, ok), err
		case "step_by":
			firstOne := true
			return lazy(func() (any, bool, error) {
				for range n - 1 {
					if !firstOne {
						if _, ok, err := x.take(); err != nil || !ok {
							return nil, false, err
						}
					}
				}
				firstOne = false
				return x.take()
			})
		}
		return x, nil
	case "take":
		n := count()
		return lazy(func() (any, bool, error) {
			if n <= 0 {
				return nil, false, nil
			}
			n--
			return x.take()
		})
	case "map", "filter_map", "map_while", "inspect", "flat_map":
		var open *rsIter
		return lazy(func() (any, bool, error) {
			for {
				if err := m.step(); err != nil {
					return nil, false, err
				}
				if open != nil {
					v, ok, err := open.take()
					if ok || err != nil {
						return v, ok, err
					}
					open = nil
				}
				v, ok, err := x.take()
				if err != nil || !ok {
					return nil, false, err
				}
				switch name {
				case "map":
					r, err := m.rsCall(arg, []any{v}, item, at)
					return r, true, err
				case "inspect":
					_, err := m.rsCall(arg, []any{v}, nil, at)
					return v, true, err
				case "flat_map":
					r, err := m.rsCall(arg, []any{v}, nil, at)
					if err != nil {
						return nil, false, err
					}
					if open, err = m.rsIterate(r, at); err != nil || open == nil {
						return nil, false, undecided("what is gone through")
					}
				default:
					in, well, err := optional(v)
					if err != nil || well || name == "map_while" {
						return in, well, err
					}
				}
			}
		})
	case "filter", "take_while", "skip_while":
		done := false
		return lazy(func() (any, bool, error) {
			for {
				if err := m.step(); err != nil {
					return nil, false, err
				}
				v, ok, err := x.take()
				if err != nil || !ok {
					return nil, false, err
				}
				if name == "skip_while" && done {
					return v, true, nil
				}
				yes, err := test(v)
				switch {
				case err != nil:
					return nil, false, err
				case name == "take_while" && !yes:
					return nil, false, nil
				case name == "skip_while" && !yes:
					done = true
					return v, true, nil
				case name != "skip_while" && yes:
					return v, true, nil
				}
			}
		})
	case "flatten":
		var open *rsIter
		return lazy(func() (any, bool, error) {
			for {
				if open != nil {
					v, ok, err := open.take()
					if ok || err != nil {
						return v, ok, err
					}
				}
				v, ok, err := x.take()
				if err != nil || !ok {
					return nil, false, err
				}
				if open, err = m.rsIterate(v, at); err != nil || open == nil {
					return nil, false, undecided("what is gone through")
				}
			}
		})
	case "enumerate":
		n := int64(-1)
		return lazy(func() (any, bool, error) {
			v, ok, err := x.take()
			n++
			return rsTupleOf(rsInt{n, "usize"}, v), ok, err
		})
	case "chain", "zip":
		other, err := m.rsIterate(arg, at)
		if err != nil || other == nil {
			return nil, undecided("what is gone through")
		}
		return lazy(func() (any, bool, error) {
			v, ok, err := x.take()
			if err != nil {
				return nil, false, err
			}
			if name == "chain" {
				if ok {
					return v, true, nil
				}
				return other.take()
			}
			w, also, err := other.take()
			return rsTupleOf(v, w), ok && also, err
		})
	case "cycle":
		l, err := m.rsRest(x)
		i := -1
		if err != nil || len(l) == 0 {
			return rsOver(nil), err
		}
		return lazy(func() (any, bool, error) { i++; return l[i%len(l)], true, m.step() })
	case "collect":
		l, err := m.rsRest(x)
		if err != nil {
			return nil, err
		}
		t := want
		if len(types) > 0 && types[0] != nil {
			t = types[0]
		}
		return m.rsCollect(l, t, at)
	case "find", "position", "any", "all", "find_map", "try_for_each", "for_each":
		for n := int64(0); ; n++ {
			v, ok, err := x.take()
			if err != nil {
				return nil, err
			}
			if !ok {
				break
			}
			switch name {
			case "for_each", "try_for_each":
				r, err := m.rsCall(arg, []any{v}, nil, at)
				if err != nil {
					return nil, err
				}
				if d, ok := rsBare(r).(*rsData); ok && name == "try_for_each" {
					if _, well := d.holding(); !well {
						return d, nil
					}
				}
				continue
			case "find_map":
				in, well, err := optional(v)
				if err != nil {
					return nil, err
				}
				if well {
					return rsSome(in), nil
				}
				continue
			}
			yes, err := test(v)
			switch {
			case err != nil:
				return nil, err
			case name == "find" && yes:
				return rsSome(v), nil
			case name == "position" && yes:
				return rsSome(rsInt{n, "usize"}), nil
			case name == "any" && yes:
				return true, nil
			case name == "all" && !yes:
				return false, nil
			}
		}
		switch name {
		case "any":
			return false, nil
		case "all":
			return true, nil
		case "for_each":
			return nil, nil
		case "try_for_each":
			return rsOk(nil), nil
		}
		return rsNone(), nil
	case "fold", "try_fold", "reduce":
		acc, f := arg, at2(args, 1)
		if name == "reduce" {
			v, ok, err := x.take()
			if err != nil || !ok {
				return rsNone(), err
			}
			acc, f = v, arg
		}
		acc = rsTyped(acc, want)
		for {
			v, ok, err := x.take()
			if err != nil {
				return nil, err
			}
			if !ok {
				break
			}
			if acc, err = m.rsCall(f, []any{acc, v}, nil, at); err != nil {
				return nil, err
			}
			if d, ok := rsBare(acc).(*rsData); ok && name == "try_fold" {
				in, well := d.holding()
				if !well {
					return d, nil
				}
				acc = in
			}
		}
		switch name {
		case "reduce":
			return rsSome(acc), nil
		case "try_fold":
			return rsOk(acc), nil
		}
		return acc, nil
	case "count", "len":
		l, err := m.rsRest(x)
		if name == "len" {
			*x = *rsOver(l)
		}
		return rsInt{int64(len(l)), "usize"}, err
	case "sum", "product":
		sign, acc := "+", any(rsInt{0, ""})
		if name == "product" {
			sign, acc = "*", rsInt{1, ""}
		}
		for {
			v, ok, err := x.take()
			if err != nil {
				return nil, err
			}
			if !ok {
				return rsTyped(acc, want), nil
			}
			if f, is := rsOpened(v).(float64); is {
				if n, ok := acc.(rsInt); ok {
					acc = float64(n.n)
				}
				v = f
			}
			if acc, err = m.rsOperate(sign, acc, v); err != nil {
				return nil, err
			}
		}
	case "max", "min", "max_by_key", "min_by_key":
		var best, bestKey any
		have := false
		for {
			v, ok, err := x.take()
			if err != nil {
				return nil, err
			}
			if !ok {
				return rsMaybe(best, have), nil
			}
			key := v
			if strings.HasSuffix(name, "key") {
				if key, err = m.rsCall(arg, []any{v}, nil, at); err != nil {
					return nil, err
				}
			}
			c, known := rsCompare(key, bestKey)
			if have && !known {
				return nil, undecided("which is the most")
			}
			if !have || strings.HasPrefix(name, "max") && c >= 0 || strings.HasPrefix(name, "min") && c < 0 {
				best, bestKey, have = v, key, true
			}
		}
	case "partition", "unzip":
		l, err := m.rsRest(x)
		if err != nil {
			return nil, err
		}
		a, b := &rsList{}, &rsList{}
		for _, v := range l {
			if name == "unzip" {
				kv, ok := rsBare(v).(*rsList)
				if !ok || len(kv.items) != 2 {
					return nil, giveUp("pairs that are parted")
				}
				a.items, b.items = append(a.items, kv.items[0]), append(b.items, kv.items[1])
				continue
			}
			yes, err := test(v)
			if err != nil {
				return nil, err
			}
			if yes {
				a.items = append(a.items, &rsCell{v: v})
			} else {
				b.items = append(b.items, &rsCell{v: v})
			}
		}
		return rsTupleOf(a, b), nil
	case "is_empty":
		l, err := m.rsRest(x)
		*x = *rsOver(l)
		return len(l) == 0, err
	case "as_str":
		l, err := m.rsRest(x)
		*x = *rsOver(slices.Clone(l))
		out := ""
		for _, v := range l {
			if c, ok := v.(character); ok {
				out += string(rune(c))
			}
		}
		return out, err
	case "size_hint":
		return dontKnow("how many there are"), nil
	}
	return nil, giveUp("the method %s of an iterator", name)
}

// rsCollect makes one value of many.
func (m *machine) rsCollect(l []any, t *rsT, at rsAt) (any, error) {
	name := "Vec"
	if t != nil {
		name = t.name
	}
	switch name {
	case "String", "str", "PathBuf":
		var b strings.Builder
		for _, v := range l {
			switch v := rsOpened(v).(type) {
			case string:
				b.WriteString(v)
			case character:
				b.WriteRune(rune(v))
			default:
				return dontKnow("a text of what is not known"), nil
			}
		}
		return b.String(), m.use(b.Len())
	case "Result", "Option":
		var in []any
		for _, v := range l {
			d, ok := rsBare(v).(*rsData)
			if !ok {
				return nil, undecided("what is collected")
			}
			x, well := d.holding()
			if !well {
				return d, nil
			}
			in = append(in, x)
		}
		v, err := m.rsCollect(in, t.arg(0), at)
		if name == "Option" {
			return rsSome(v), err
		}
		return rsOk(v), err
	case "HashMap", "BTreeMap", "IndexMap":
		mp := newRsMap(name == "BTreeMap")
		for _, v := range l {
			kv, ok := rsBare(v).(*rsList)
			if !ok || len(kv.items) != 2 {
				return nil, giveUp("pairs of a map")
			}
			if _, _, ok := mp.put(kv.items[0].v, rsTyped(kv.items[1].v, t.arg(1))); !ok {
				return nil, undecided("a key that is not known")
			}
		}
		return mp, m.use(len(l))
	case "HashSet", "BTreeSet":
		s := &rsList{set: true}
		for _, v := range l {
			if !slices.ContainsFunc(s.items, func(c *rsCell) bool { k, ok := rsCompare(c.v, v); return ok && k == 0 }) {
				s.items = append(s.items, &rsCell{v: v})
			}
		}
		if name == "BTreeSet" {
			slices.SortStableFunc(s.items, func(a, b *rsCell) int { c, _ := rsCompare(a.v, b.v); return c })
		}
		return s, m.use(len(l))
	}
	for i := range l {
		l[i] = rsTyped(l[i], t.arg(0))
	}
	return rsListOf(l...), m.use(len(l))
}
