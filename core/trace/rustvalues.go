package trace

import (
	"cmp"
	"net/netip"
	"slices"
	"strconv"
	"strings"

	"ubique/core/rust"
	"ubique/core/value"
)

// Values of a program of Rust: nil for (), bool, float64, string, character, and the
// kinds below.
type (
	// rsInt is a whole number of a type; none is told for a literal alone.
	rsInt struct {
		n int64
		t string
	}
	// rsData is a structure, or a variant of an enumeration. The standard library's have
	// no def.
	rsData struct {
		def     *rsDef
		typ     string
		variant string
		names   []string // of its fields; none for those with places
		fields  []*rsCell
	}
	// rsCell holds a variable, a field, an element.
	rsCell struct{ v any }
	// rsRef is a reference through which something is set.
	rsRef struct{ cell *rsCell }
	// rsShared is what several owners have: a Mutex, a RefCell, an atomic.
	rsShared struct {
		cell  *rsCell
		kind  string
		unset bool
	}
	rsList struct {
		items []*rsCell
		tuple bool
		set   bool
	}
	rsMap struct {
		keys []any
		at   map[string]*rsCell
		by   bool // in the order of its keys
	}
	// rsFn is a function, a closure, or something that is done here.
	rsFn struct {
		name   string
		fn     *rust.Fn
		mod    *rsModule
		def    *rsDef
		types  map[string]*rsT
		expr   *rust.Expr // of a closure
		scope  *rsScope
		native func(args []any, want *rsT, at rsAt) (any, error)
	}
	// rsFuture is what an async function or block gives: it runs where it is awaited.
	rsFuture struct {
		run   func() (any, error)
		ready bool
		v     any
	}
	// rsHandle is a thread, or a task.
	rsHandle struct {
		v     any
		stays bool
	}
	// rsIter gives one value after the other.
	rsIter struct {
		next  func() (any, bool, error)
		ahead []any // what was looked at
		back  *[]any
	}
	rsChan struct{ queue []any }
	// rsText is what a formatter has by now.
	rsText struct{ b strings.Builder }
	rsIP   struct{ a netip.Addr }
	rsSock struct{ a netip.AddrPort }
	// rsJSON is a value of serde_json, toml or serde_yaml.
	rsJSON struct{ v *value.Value }
)

// rsT is a type as values have it: references and boxes are looked through.
type rsT struct {
	name string
	args []*rsT
	def  *rsDef
}

func (t *rsT) arg(i int) *rsT {
	if t == nil || i >= len(t.args) {
		return nil
	}
	return t.args[i]
}

func (t *rsT) is(name string) bool { return t != nil && t.name == name }

// rsFrame is a call of a function.
type rsFrame struct {
	mod    *rsModule
	self   *rsDef
	types  map[string]*rsT
	ret    *rsT
	locals [][]*rust.Item
}

type rsScope struct {
	vars map[string]*rsCell
	up   *rsScope
	fr   *rsFrame
}

func (s *rsScope) inner() *rsScope { return &rsScope{vars: map[string]*rsCell{}, up: s, fr: s.fr} }

func (s *rsScope) find(name string) *rsCell {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c
		}
	}
	return nil
}

// rsLeave leaves a function, a loop or a block.
type rsLeave struct {
	kind, label string
	v           any
}

func (l *rsLeave) Error() string { return l.kind }

func rsMade(typ, variant string, v ...any) *rsData {
	d := &rsData{typ: typ, variant: variant}
	for _, x := range v {
		d.fields = append(d.fields, &rsCell{v: x})
	}
	return d
}

func rsSome(v any) any { return rsMade("Option", "Some", v) }
func rsNone() any      { return rsMade("Option", "None") }
func rsOk(v any) any   { return rsMade("Result", "Ok", v) }

// rsErr is an error of the library: its type, and what it says.
func rsErr(typ, text string) any {
	e := &rsData{typ: typ, names: []string{"\x00text"}, fields: []*rsCell{{v: text}}}
	return rsMade("Result", "Err", e)
}

func rsMaybe(v any, ok bool) any {
	if ok {
		return rsSome(v)
	}
	return rsNone()
}

// holding reports whether a value is an Ok or a Some, and gives what is in it.
func (d *rsData) holding() (any, bool) {
	if d.def == nil && (d.variant == "Ok" || d.variant == "Some") && len(d.fields) == 1 {
		return d.fields[0].v, true
	}
	return nil, false
}

func (d *rsData) field(name string) *rsCell {
	for i, n := range d.names {
		if n == name {
			return d.fields[i]
		}
	}
	if i, err := strconv.Atoi(name); err == nil && len(d.names) == 0 && i < len(d.fields) && i >= 0 {
		return d.fields[i]
	}
	return nil
}

func rsListOf(items ...any) *rsList {
	l := &rsList{}
	for _, x := range items {
		l.items = append(l.items, &rsCell{v: x})
	}
	return l
}

func rsTupleOf(items ...any) *rsList {
	l := rsListOf(items...)
	l.tuple = true
	return l
}

func (l *rsList) values() []any {
	out := make([]any, len(l.items))
	for i, c := range l.items {
		out[i] = c.v
	}
	return out
}

// bare looks through references.
func rsBare(v any) any {
	for n := 0; n < 40; n++ {
		r, ok := v.(*rsRef)
		if !ok {
			return v
		}
		v = r.cell.v
	}
	return v
}

// rsOpened looks through references and what is shared: what a lock gives.
func rsOpened(v any) any {
	for n := 0; n < 40; n++ {
		switch x := v.(type) {
		case *rsRef:
			v = x.cell.v
		case *rsShared:
			if x.unset {
				return v
			}
			v = x.cell.v
		default:
			return v
		}
	}
	return v
}

// rsWidth are the whole numbers by their sizes in bits, less than 0 for those with a
// sign.
var rsWidth = map[string]int{"u8": 8, "u16": 16, "u32": 32, "u64": 64, "usize": 64, "u128": 64, "i8": -8, "i16": -16, "i32": -32, "i64": -64, "isize": -64, "i128": -64}

// rsFits reports whether a number is one of a type.
func rsFits(n int64, t string) bool {
	w := rsWidth[t]
	switch {
	case w == 0 || w == -64:
		return true
	case w == 64:
		return n >= 0
	case w > 0:
		return n >= 0 && n < 1<<w
	}
	return n >= -(1<<(-w-1)) && n < 1<<(-w-1)
}

// rsTyped gives a literal the type that stands where it goes.
func rsTyped(v any, t *rsT) any {
	if t == nil {
		return v
	}
	switch x := v.(type) {
	case rsInt:
		if x.t == "" && rsWidth[t.name] != 0 {
			return rsInt{x.n, t.name}
		}
	case *rsData:
		if x.def == nil && len(x.fields) == 1 && (x.variant == "Some" || x.variant == "Ok") && t.arg(0) != nil {
			if now := rsTyped(x.fields[0].v, t.arg(0)); now != x.fields[0].v {
				return rsMade(x.typ, x.variant, now)
			}
		}
	case *rsList:
		for i, c := range x.items {
			of := t.arg(0)
			if x.tuple {
				of = t.arg(i)
			}
			if n, ok := c.v.(rsInt); ok && n.t == "" {
				c.v = rsTyped(n, of)
			}
		}
	}
	return v
}

// rsTypeOf is the type of a value as far as it is known.
func rsTypeOf(v any) *rsT { return rsTypeOfIn(v, 0) }

func rsTypeOfIn(v any, depth int) *rsT {
	if depth > 6 {
		return nil
	}
	switch v := rsOpened(v).(type) {
	case rsInt:
		if v.t != "" {
			return &rsT{name: v.t}
		}
	case string:
		return &rsT{name: "String"}
	case bool:
		return &rsT{name: "bool"}
	case float64:
		return &rsT{name: "f64"}
	case character:
		return &rsT{name: "char"}
	case rsIP:
		return &rsT{name: "IpAddr"}
	case rsSock:
		return &rsT{name: "SocketAddr"}
	case *rsData:
		t := &rsT{name: v.typ, def: v.def}
		if in, ok := v.holding(); ok {
			t.args = []*rsT{rsTypeOfIn(in, depth+1)}
		}
		return t
	case *rsList:
		t := &rsT{name: "Vec"}
		if v.tuple {
			t.name = "()"
		}
		for _, c := range v.items {
			if t.args = append(t.args, rsTypeOfIn(c.v, depth+1)); !v.tuple {
				break
			}
		}
		return t
	case *rsMap:
		return &rsT{name: "HashMap"}
	}
	return nil
}

// rsBoxes are types that are looked through.
var rsBoxes = map[string]bool{"Box": true, "Arc": true, "Rc": true, "Cow": true, "Pin": true, "Data": true, "Extension": true}

// rsType is a type of the source.
func (m *machine) rsType(t *rust.Type, fr *rsFrame) *rsT { return m.rsTypeIn(t, fr, 0) }

func (m *machine) rsTypeIn(t *rust.Type, fr *rsFrame, depth int) *rsT {
	if t == nil || depth > 20 || m.depth > maxDepth {
		return nil
	}
	m.depth++
	defer func() { m.depth-- }()
	args := func() (list []*rsT) {
		for _, a := range t.Args {
			list = append(list, m.rsTypeIn(a, fr, depth+1))
		}
		return list
	}
	switch t.Kind {
	case rust.RefType:
		return m.rsTypeIn(t.Args[0], fr, depth+1)
	case rust.TupleType:
		return &rsT{name: "()", args: args()}
	case rust.ArrayType:
		return &rsT{name: "Vec", args: args()}
	case rust.FnType:
		return &rsT{name: "fn", args: args()}
	case rust.PathType:
		if t.Self != nil || len(t.Path) == 0 {
			return nil
		}
	default:
		return nil
	}
	if len(t.Path) == 1 && fr != nil {
		if known := fr.types[t.Path[0]]; known != nil {
			return known
		}
		if t.Path[0] == "Self" && fr.self != nil {
			return &rsT{name: fr.self.name, def: fr.self}
		}
	}
	last := t.Last()
	if rsBoxes[last] && len(t.Args) > 0 {
		return m.rsTypeIn(t.Args[len(t.Args)-1], fr, depth+1)
	}
	var mod *rsModule
	if fr != nil {
		mod = fr.mod
	}
	switch e := m.rsFindIn(t.Path, mod, fr, depth); {
	case e.def != nil && len(e.rest) == 0:
		return &rsT{name: e.def.name, def: e.def, args: args()}
	case e.t != nil && len(e.rest) == 0:
		return e.t
	case e.item != nil && e.item.Kind == rust.TypeItem:
		inner := &rsFrame{mod: e.mod, types: map[string]*rsT{}}
		for i, g := range e.item.Generics {
			if i < len(t.Args) {
				inner.types[g.Name] = m.rsTypeIn(t.Args[i], fr, depth+1)
			}
		}
		return m.rsTypeIn(e.item.Type, inner, depth+1)
	case e.item != nil, e.path == "":
		return nil
	default:
		if i := strings.LastIndexByte(e.path, '.'); i >= 0 {
			last = e.path[i+1:]
		}
	}
	if len(last) == 1 || t.Path[0] == "Self" {
		return nil
	}
	return &rsT{name: last, args: args()}
}

// rsUnify learns from a type and what stands in its place what a function is made for.
func (m *machine) rsUnify(t *rust.Type, now *rsT, names map[string]bool, types map[string]*rsT) {
	t = t.Bare()
	if t == nil || now == nil || t.Kind != rust.PathType && t.Kind != rust.TupleType && t.Kind != rust.ArrayType {
		return
	}
	if len(t.Path) == 1 && names[t.Path[0]] {
		if types[t.Path[0]] == nil {
			types[t.Path[0]] = now
		}
		return
	}
	if rsBoxes[t.Last()] && len(t.Args) > 0 {
		m.rsUnify(t.Args[len(t.Args)-1], now, names, types)
		return
	}
	for i, a := range t.Args {
		m.rsUnify(a, now.arg(i), names, types)
	}
}

// rsCopied is a value that is read, where reading copies it.
func (m *machine) rsCopied(v any) any {
	switch x := v.(type) {
	case *rsData:
		if x.def != nil && x.def.copies {
			return m.rsClone(x)
		}
	case *rsList:
		if x.tuple {
			c := &rsList{tuple: true}
			for _, e := range x.items {
				c.items = append(c.items, &rsCell{v: e.v})
			}
			return c
		}
	}
	return v
}

// rsClone copies a value as far as it is owned.
func (m *machine) rsClone(v any) any {
	r := &reach{}
	defer func() { m.used += 64 * r.seen }()
	return rsCloneIn(v, r)
}

func rsCloneIn(v any, r *reach) any {
	if !r.in() {
		return v
	}
	defer r.out()
	cells := func(list []*rsCell) []*rsCell {
		out := make([]*rsCell, len(list))
		for i, c := range list {
			out[i] = &rsCell{v: rsCloneIn(c.v, r)}
		}
		return out
	}
	switch x := v.(type) {
	case *rsRef:
		return rsCloneIn(x.cell.v, r)
	case *rsData:
		return &rsData{def: x.def, typ: x.typ, variant: x.variant, names: x.names, fields: cells(x.fields)}
	case *rsList:
		return &rsList{tuple: x.tuple, set: x.set, items: cells(x.items)}
	case *rsMap:
		c := &rsMap{keys: slices.Clone(x.keys), at: map[string]*rsCell{}, by: x.by}
		for k, f := range x.at {
			c.at[k] = &rsCell{v: rsCloneIn(f.v, r)}
		}
		return c
	case *rsIter:
		rest := []any{}
		for len(rest) < maxItems {
			v, ok, err := x.take()
			if !ok || err != nil {
				break
			}
			rest = append(rest, v)
		}
		*x = *rsOver(rest)
		return rsOver(slices.Clone(rest))
	}
	return v
}

// take gives the next value.
func (i *rsIter) take() (any, bool, error) {
	if len(i.ahead) > 0 {
		v := i.ahead[0]
		i.ahead = i.ahead[1:]
		return v, true, nil
	}
	return i.next()
}

// rsOver goes through values that are all there.
func rsOver(items []any) *rsIter {
	left := &items
	return &rsIter{back: left, next: func() (any, bool, error) {
		if len(*left) == 0 {
			return nil, false, nil
		}
		v := (*left)[0]
		*left = (*left)[1:]
		return v, true, nil
	}}
}

// rsKey is what a value is in a map; ok is false where that is not known.
func rsKey(v any) (string, bool) { return rsKeyIn(v, &reach{}) }

func rsKeyIn(v any, r *reach) (string, bool) {
	if r.seen > rsLooked || !r.in() {
		return "", false
	}
	defer r.out()
	parts := func(k string, cells []*rsCell) (string, bool) {
		for _, c := range cells {
			in, ok := rsKeyIn(c.v, r)
			if !ok {
				return "", false
			}
			k += "\x00" + in
		}
		return k, true
	}
	switch v := rsOpened(v).(type) {
	case string:
		return "s" + v, true
	case rsInt:
		return "i" + strconv.FormatInt(v.n, 10), true
	case bool:
		return "b" + strconv.FormatBool(v), true
	case character:
		return "c" + string(rune(v)), true
	case rsIP:
		return "a" + v.a.String(), true
	case *rsData:
		return parts("d"+v.typ+"."+v.variant, v.fields)
	case *rsList:
		return parts("l", v.items)
	}
	return "", false
}

func newRsMap(ordered bool) *rsMap { return &rsMap{at: map[string]*rsCell{}, by: ordered} }

func (x *rsMap) put(k any, v any) (old any, had, ok bool) {
	key, ok := rsKey(k)
	if !ok {
		return nil, false, false
	}
	if c := x.at[key]; c != nil {
		old = c.v
		c.v = v
		return old, true, true
	}
	x.at[key] = &rsCell{v: v}
	x.keys = append(x.keys, rsOpened(k))
	if x.by {
		slices.SortStableFunc(x.keys, func(a, b any) int {
			c, _ := rsCompare(a, b)
			return c
		})
	}
	return nil, false, true
}

func (x *rsMap) cell(k any) (*rsCell, bool) {
	key, ok := rsKey(k)
	return x.at[key], ok
}

func (x *rsMap) remove(k any) (any, bool) {
	key, ok := rsKey(k)
	c := x.at[key]
	if !ok || c == nil {
		return nil, false
	}
	delete(x.at, key)
	x.keys = slices.DeleteFunc(x.keys, func(y any) bool { other, _ := rsKey(y); return other == key })
	return c.v, true
}

// rsCompare orders two values; ok is false where that is not known.
func rsCompare(a, b any) (c int, ok bool) { return rsCompareIn(a, b, &reach{}) }

// rsLooked is how many values are looked at to compare two, or to find one in a map.
const rsLooked = 2000

func rsCompareIn(a, b any, r *reach) (c int, ok bool) {
	if r.seen > rsLooked || !r.in() {
		return 0, false
	}
	defer r.out()
	a, b = rsOpened(a), rsOpened(b)
	switch x := a.(type) {
	case rsInt:
		switch y := b.(type) {
		case rsInt:
			return cmp.Compare(x.n, y.n), true
		}
	case float64:
		if y, ok := b.(float64); ok {
			return compare(x, y), true
		}
	case string:
		if y, ok := b.(string); ok {
			return strings.Compare(x, y), true
		}
	case character:
		if y, ok := b.(character); ok {
			return cmp.Compare(int64(x), int64(y)), true
		}
	case bool:
		if y, ok := b.(bool); ok {
			n := map[bool]int64{true: 1}
			return cmp.Compare(n[x], n[y]), true
		}
	case rsIP:
		if y, ok := b.(rsIP); ok {
			return x.a.Compare(y.a), true
		}
	case rsSock:
		if y, ok := b.(rsSock); ok {
			return x.a.Compare(y.a), true
		}
	case nil:
		return 0, b == nil
	case *rsData:
		y, isData := b.(*rsData)
		if !isData || x.typ != y.typ {
			return 0, false
		}
		if x.variant != y.variant {
			rank := func(d *rsData) int {
				if d.def != nil {
					return slices.IndexFunc(d.def.item.Variants, func(v rust.Variant) bool { return v.Name == d.variant })
				}
				return map[string]int{"Some": 1, "Err": 1}[d.variant]
			}
			return cmp.Compare(int64(rank(x)), int64(rank(y))), true
		}
		for i := range min(len(x.fields), len(y.fields)) {
			if c, ok := rsCompareIn(x.fields[i].v, y.fields[i].v, r); c != 0 || !ok {
				return c, ok
			}
		}
		return 0, true
	case *rsList:
		y, isList := b.(*rsList)
		if !isList {
			return 0, false
		}
		for i := range min(len(x.items), len(y.items)) {
			if c, ok := rsCompareIn(x.items[i].v, y.items[i].v, r); c != 0 || !ok {
				return c, ok
			}
		}
		return cmp.Compare(int64(len(x.items)), int64(len(y.items))), true
	case *rsMap:
		y, isMap := b.(*rsMap)
		if !isMap {
			return 0, false
		}
		if len(x.keys) != len(y.keys) {
			return 1, true
		}
		for k, c := range x.at {
			if d := y.at[k]; d == nil {
				return 1, true
			} else if c, ok := rsCompareIn(c.v, d.v, r); c != 0 || !ok {
				return c, ok
			}
		}
		return 0, true
	}
	return 0, false
}

// rsValue turns what only Rust has into a value of package value.
func (t *turned) rsValue(v any, w *value.Value, depth int) *value.Value {
	switch v := v.(type) {
	case rsInt:
		w.Kind, w.Num = value.Num, float64(v.n)
	case rsIP:
		w.Kind, w.Text = value.Str, v.a.String()
	case rsSock:
		w.Kind, w.Text = value.Str, v.a.String()
	case *rsRef:
		return t.value(v.cell.v, depth+1)
	case *rsShared:
		return t.value(v.cell.v, depth+1)
	case *rsFn:
		w.Kind, w.Text = value.Func, v.name
	case *rsList:
		w.Kind = value.List
		for _, x := range v.items {
			w.Kids = append(w.Kids, t.value(x.v, depth+1))
		}
	case *rsData:
		if in, ok := v.holding(); ok {
			return t.value(in, depth+1)
		}
		w.Kind, w.Text = value.Object, v.typ
		if v.def == nil && v.variant == "None" {
			w.Kind, w.Text = value.Null, ""
			return w
		}
		for i, f := range v.fields {
			name := strconv.Itoa(i)
			if i < len(v.names) {
				name = v.names[i]
			}
			w.Keys, w.Kids = append(w.Keys, name), append(w.Kids, t.value(f.v, depth+1))
		}
	default:
		return value.NotKnown("something that is not followed", w.At)
	}
	return w
}
