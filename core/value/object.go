package value

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
)

// attribute gives an attribute of a class or of an object of a class: fields,
// what methods assign to this or self, methods, and the bases' attributes.
func (e *Eval) attribute(base *Value, name string, c *context) *Value {
	return e.attributeOf(base, base, name, c)
}

// attributeOf looks in the class of base for an attribute of self, an object
// of that class or of one that comes from it.
func (e *Eval) attributeOf(base, self *Value, name string, c *context) *Value {
	r := base.ref
	if r == nil {
		return nil
	}
	if r.several && e.overridden(r.node, strings.TrimSuffix(name, "()"), 0) {
		return unknown("the "+name+" of one of several classes", base.At)
	}
	called := e.methods
	key := [3]any{r.node, name, called}
	if e.busy(key) {
		if in := r.file.Inside[r.node]; in != nil && base.Kind == Instance && len(in.Names[name]) > 0 && in.Names[name][0].Kind != "func" { // made of what the class says
			return e.bindings(in.Names[name], in, nil, 0)
		}
		return nil
	}
	e.methods = false
	defer func() { e.methods = called }()
	e.active[key] = true
	defer delete(e.active, key)
	inside := r.file.Inside[r.node]
	if inside == nil {
		return nil
	}
	if v := e.settingsField(base, name, inside); v != nil {
		return v
	}
	if v := field(base, name, inside); v != nil {
		if v.partly(0) {
			if d := e.bindings(inside.Names[name], inside, nil, 0); d != nil {
				v = v.filled(d, 0)
			}
		}
		return e.afterInit(base, name, v)
	}
	var v *Value
	bs := inside.Names[name]
	if r.file.Lang == code.PHP { // properties and methods are told apart
		if method, called := strings.CutSuffix(name, "()"); called {
			bs = inside.Names[method]
		} else if p := inside.Names["$"+name]; len(p) > 0 || len(bs) > 0 && bs[0].Kind == "func" {
			bs = p
		}
	}
	if r.file.Lang == code.Ruby || javascript(r.file.Lang) { // what the class has and what its objects have
		of := func(static bool) (list []*code.Binding) {
			for _, b := range bs {
				if (b.Value.Is(code.Func) && b.Value.Flag&code.Static != 0) == static {
					list = append(list, b)
				}
			}
			return list
		}
		if list := of(base.Kind == Class); len(list) > 0 || base.Kind == Instance {
			bs = list
		}
	}
	if members(r.file.Lang) && len(bs) > 1 { // fields and methods have names of their own
		field, method := bs[:0:0], bs[:0:0]
		for _, b := range bs {
			if b.Kind == "func" {
				method = append(method, b)
			} else {
				field = append(field, b)
			}
		}
		if len(field) > 0 && len(method) > 0 {
			if bs = field; called {
				bs = method
			}
		}
	}
	if len(bs) > 0 {
		if v = e.fieldDefault(bs[len(bs)-1], inside); v == nil {
			v = e.bindings(bs, inside, e.made(base), 0)
		}
		if v != nil && r.file.Lang == code.Python && base.Kind == Instance {
			v = e.afterInit(base, name, v)
		}
	}
	{
		declared := v != nil && v.Kind != Undef && r.file.Lang != code.PHP
		for _, site := range r.file.Sets {
			if site.Value == nil || site.Scope.Class != r.node || site.Node.Name != name || !site.Node.Is(code.Member) || !site.Node.Kid(0).Is(code.Name) {
				continue
			}
			if o := site.Node.Kids[0].Name; o != "this" && o != "self" && o != "cls" && o != "$this" {
				continue
			}
			if v != nil && v.Kind == Func {
				break
			}
			fn := site.Scope.Func
			if declared && fn != nil && !constructs(fn, r.node) && len(e.callsOf(fn, r.file)) == 0 {
				continue // nothing calls what would set it
			}
			var ctx *context
			if fn != nil && constructs(fn, r.node) && (r.args != nil || r.keys != nil) {
				if members(r.file.Lang) && len(fn.Kid(0).Kids) != len(r.args)+len(r.keys) {
					continue // another constructor
				}
				ctx = &context{fn: fn, args: r.args, this: base, keys: r.keys}
			}
			w := e.expr(site.Value, site.Scope, ctx)
			w = w.with(Step{r.file.At(site.Node), r.file.Between(site.Node.Off, site.Value.End, 72)})
			if (v == nil || v.Kind == Undef) && len(site.Guards) > 0 { // set here only sometimes: else as a base has it
				e.methods = called
				w := e.inherited(base, self, name, c)
				if e.methods = false; w != nil {
					v = w
				}
			}
			if v == nil || v.Kind == Undef || len(site.Guards) == 0 {
				v = w
				continue
			}
			for i := len(site.Guards) - 1; i >= 0; i-- {
				w = e.guarded(site.Guards[i], w, v, ctx)
			}
			v = w
		}
	}
	if w := e.setFrom(base, name); w != nil {
		v = w
	}
	if v != nil && (v.Kind == Object || v.Kind == Cond || v.Kind == List) {
		v = e.elementsSet(base, name, v)
	}
	if v != nil {
		static := v.Kind == Func && base.Kind == Class && v.ref.node != nil && v.ref.node.Flag&code.Getter != 0
		if py := r.file.Lang == code.Python && v.Kind == Func && v.ref.node != nil; py && decorated(v.ref.node, "staticmethod") {
			return v
		} else if py && base.Kind == Class && decorated(v.ref.node, "classmethod") {
			static = true
		}
		if v.Kind == Func && v.ref.node != nil && base.Kind == Instance || static {
			w := *v
			rr := *v.ref
			rr.this = self
			w.ref = &rr
			if v.ref.node.Flag&code.Getter != 0 || property(v.ref.node) {
				return e.invoke(&w, nil, nil, c)
			}
			return &w
		}
		return v
	}
	// A parameter property of a constructor: TypeScript, PHP, records.
	for _, m := range r.node.Kid(1).Kids {
		if m.Is(code.Func) && (m.Name == "constructor" || m.Name == "__construct") {
			for i, p := range m.Kid(0).Kids {
				if strings.TrimPrefix(p.Name, "$") != name || p.Flag&code.Exported == 0 {
					continue
				}
				if i < len(r.args) {
					return r.args[i]
				}
				if v := r.keys[name]; v != nil {
					return v
				}
				if inner := r.file.Funcs[m]; inner != nil && r.args == nil && r.keys == nil { // as the places that make one say
					for _, b := range inner.Names[p.Name] {
						if b.Kind == "param" {
							if v := e.param(b, inner, nil); v.Kind != Unknown {
								return v
							}
						}
					}
				}
				if p.Kid(0) != nil {
					return e.expr(p.Kids[0], r.file.Inside[r.node], nil)
				}
			}
		}
	}
	e.methods = called
	return e.inherited(base, self, name, c)
}

// elementsSet is a map that an attribute holds with what methods of the class
// write into its elements: @values[:port] = …, $config->values[$key] = ….
func (e *Eval) elementsSet(base *Value, name string, v *Value) *Value {
	r := base.ref
	for _, site := range r.file.Sets {
		n := site.Node
		holder := n.Kid(0)
		if !n.Is(code.Index) || !holder.Is(code.Member) || holder.Name != name || site.Scope.Class != r.node || !holder.Kid(0).Is(code.Name) || e.busy(n) {
			continue
		}
		own := map[string]bool{"self": true, "this": true, "$this": true}[holder.Kids[0].Name]
		var ctx *context
		if fn := site.Scope.Func; fn != nil && constructs(fn, r.node) && (r.args != nil || r.keys != nil) {
			ctx = &context{fn: fn, args: r.args, this: base, keys: r.keys}
		}
		e.active[n] = true
		k := e.expr(n.Kid(1), site.Scope, ctx).folded()
		w := e.expr(site.Value, site.Scope, ctx)
		var test *Value
		for _, g := range site.Guards {
			t := e.guardIn(g, ctx)
			if test != nil {
				t = op("&&", t.Py, t.At, test, t)
			}
			test = t
		}
		delete(e.active, n)
		add := &Value{Kind: Object, At: w.At, Keys: []string{k.Text}, Kids: []*Value{w}}
		if !own || k.Kind != Str || site.Turn || site.Op != "=" {
			why := unknown("an element that is set while the program runs", r.file.At(n))
			add = &Value{Kind: Object, At: w.At, Keys: []string{"..."}, Kids: []*Value{why}}
			test = nil
		}
		change := func(o *Value) *Value {
			out := *o
			out.Keys, out.Kids = slices.Clone(o.Keys), slices.Clone(o.Kids)
			if test == nil {
				out.spread(add, false)
			} else {
				out.choose(test, add, &Value{Kind: Object}, false)
			}
			return &out
		}
		switch {
		case v.Kind == Object:
			v = change(v)
		case v.Kind == List && r.file.Lang == code.PHP && len(v.Kids) == 0:
			v = change(&Value{Kind: Object, At: v.At})
		case v.objects(0) && v.choices(maxSides) < maxSides:
			v = v.leaves(change)
		}
	}
	return v
}

// inherited gives an attribute as the bases of a class have it.
func (e *Eval) inherited(base, self *Value, name string, c *context) *Value {
	r := base.ref
	for _, b := range r.node.Kid(0).Kids {
		if b.Is(code.Keyword) {
			continue
		}
		bv := e.expr(b, r.scope, nil)
		switch bv.Kind {
		case Class:
			w := *bv
			w.Kind = base.Kind
			rr := *bv.ref
			rr.args, rr.keys = e.handedOn(base)
			w.ref = &rr
			if got := e.attributeOf(&w, self, name, c); got != nil {
				return got
			}
		case External:
			if base.Kind == Instance {
				return &Value{Kind: External, Text: bv.Text + "()." + name, Recv: &Value{Kind: External, Text: bv.Text + "()"}}
			}
		}
	}
	return nil
}

// handedOn is what the constructor of a class hands to that of its base; all
// of its own arguments where the class has no constructor.
func (e *Eval) handedOn(v *Value) ([]*Value, map[string]*Value) {
	r := v.ref
	for _, m := range r.node.Kid(1).Kids {
		if !m.Is(code.Func) || !constructs(m, r.node) || e.busy(m) {
			continue
		}
		inner := r.file.Funcs[m]
		var call *code.Node
		m.Kid(1).Walk(func(n *code.Node) bool {
			if n.Is(code.Call) && call == nil && supers(n) {
				call = n
			}
			return call == nil && !n.Is(code.Func) && !n.Is(code.Class)
		})
		if call == nil || inner == nil {
			return nil, nil
		}
		e.active[m] = true
		defer delete(e.active, m)
		args, keys := e.args(call, inner, &context{fn: m, args: r.args, keys: r.keys, this: v})
		if fn := call.Kid(0); fn.Is(code.Member) && fn.Kid(0).Is(code.Name) && fn.Name == "__init__" && len(args) > 0 {
			args = args[1:] // Base.__init__(self, …)
		}
		return args, keys
	}
	return r.args, r.keys
}

// supers tells a call of the constructor of a base.
func supers(n *code.Node) bool {
	fn := n.Kid(0)
	switch {
	case fn.Is(code.Name):
		return fn.Name == "super"
	case fn.Is(code.Member) && fn.Name == "__init__":
		return true
	case fn.Is(code.Member) && fn.Name == "__construct":
		return fn.Kid(0).Is(code.Name) && fn.Kids[0].Name == "parent"
	}
	return false
}

// BaseArguments is what a class of the tree that is called with these
// arguments hands to the class that it comes from.
func (e *Eval) BaseArguments(class *Value, args []*Value, keys map[string]*Value) ([]*Value, map[string]*Value) {
	v := *class
	r := *class.ref
	r.args, r.keys = args, keys
	v.Kind, v.ref = Instance, &r
	args, keys = e.handedOn(&v)
	for _, b := range r.node.Kid(0).Kids {
		if b.Is(code.Keyword) {
			continue
		}
		if bv := e.expr(b, r.scope, nil); bv.Kind == Class && bv.ref != nil && bv.ref.node != r.node {
			return e.BaseArguments(bv, args, keys)
		}
	}
	return args, keys
}

// setFrom gives what is written into an attribute through a variable that
// holds an object of the class; nil where nothing is, or where it is not the
// only place.
func (e *Eval) setFrom(base *Value, name string) *Value {
	if base.Kind != Instance {
		return nil
	}
	var found *Value
	for _, f := range e.Loader.Loaded() {
		for _, site := range f.Sets {
			obj := site.Node.Kid(0)
			if site.Value == nil || !site.Node.Is(code.Member) || site.Node.Name != name || !obj.Is(code.Name) || obj.Name == "this" || obj.Name == "$this" || obj.Name == "self" || obj.Name == "cls" || e.busy(site.Node) {
				continue
			}
			e.active[site.Node] = true
			o := e.Expr(obj, site.Scope)
			same := o.Kind == Instance && o.ref != nil && o.ref.node == base.ref.node || e.yielded(obj.Name, site.Scope, base.ref.node)
			var w *Value
			if same {
				w = e.Expr(site.Value, site.Scope)
			}
			delete(e.active, site.Node)
			if !same {
				continue
			}
			if found != nil {
				return nil
			}
			if len(site.Guards) > 0 {
				return unknown("what "+name+" is set to under a condition", f.At(site.Node))
			}
			found = w.with(Step{f.At(site.Node), f.Between(site.Node.Off, site.Value.End, 72)})
		}
	}
	return found
}

// yielded reports whether a name is the parameter of the block that a class of
// Ruby is made with: the object itself, where its initialize yields self.
func (e *Eval) yielded(name string, s *code.Scope, class *code.Node) bool {
	if s.File.Lang != code.Ruby {
		return false
	}
	for _, b := range s.Names[name] {
		if b.Kind != "param" || b.Func == nil {
			continue
		}
		for _, site := range s.File.Calls {
			fn := site.Node.Kid(0)
			if fn.Is(code.Member) && fn.Name == "new" && site.Node.Kids[len(site.Node.Kids)-1] == b.Func {
				v := e.Expr(fn.Kid(0), site.Scope)
				return v.Kind == Class && v.ref != nil && v.ref.node == class
			}
		}
	}
	return false
}

// constructs reports whether a function is the constructor of a class.
func constructs(fn, class *code.Node) bool {
	return fn.Name == "constructor" || fn.Name == "__init__" || fn.Name == "initialize" || fn.Name == "__construct" || fn.Name == class.Name && fn.Name != ""
}

// made is the call that made an object, for what its constructor sets; nil
// where it is not known.
func (e *Eval) made(base *Value) *context {
	r := base.ref
	if base.Kind != Instance || r.args == nil && r.keys == nil || !members(r.file.Lang) {
		return nil
	}
	for _, m := range r.node.Kid(1).Kids {
		if m.Is(code.Func) && constructs(m, r.node) && len(m.Kid(0).Kids) == len(r.args) {
			return &context{fn: m, args: r.args, keys: r.keys, this: base}
		}
	}
	return &context{this: base}
}

// field gives a declared field of an object whose class takes its fields from
// the call that makes it: data classes, named tuples, models (Python
// documentation, "dataclasses"; pydantic, "Models"). Nil where the call does
// not give it.
func field(base *Value, name string, inside *code.Scope) *Value {
	r := base.ref
	if base.Kind != Instance || r.file.Lang != code.Python || r.args == nil && r.keys == nil || len(inside.Names["__init__"]) > 0 {
		return nil
	}
	i := 0
	for _, n := range r.node.Kid(1).Kids {
		if !n.Is(code.Bind) || !n.Kid(0).Is(code.Name) {
			continue
		}
		if n.Kids[0].Name == name {
			if v := r.keys[name]; v != nil {
				return v
			}
			if i < len(r.args) {
				return r.args[i]
			}
			if v := r.keys["**"]; v != nil {
				return unknown("arguments that are made while the program runs", v.At)
			}
			return nil
		}
		i++
	}
	return nil
}

// afterInit is a field of a data class as its __post_init__ leaves it (Python
// documentation, "dataclasses", Post-init processing).
func (e *Eval) afterInit(base *Value, name string, v *Value) *Value {
	r := base.ref
	for _, site := range r.file.Sets {
		if fn := site.Scope.Func; fn == nil || fn.Name != "__post_init__" || site.Scope.Class != r.node || !site.Node.Is(code.Member) || site.Node.Name != name || site.Node.Kid(0).Dotted() != "self" || e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		key := [3]any{r.node, name, false}
		before := e.active[key]
		delete(e.active, key) // the field as it was is asked for in there
		ctx := &context{fn: site.Scope.Func, args: nil, this: base}
		w := e.expr(site.Value, site.Scope, ctx)
		for i := len(site.Guards) - 1; i >= 0; i-- {
			w = e.guarded(site.Guards[i], w, v, ctx)
		}
		if before {
			e.active[key] = true
		}
		delete(e.active, site.Node)
		v = w
	}
	return v
}

// setLater is a field of an object that the methods of its class may set under
// a name that is made: setattr(self, name, value).
func (e *Eval) setLater(base *Value, name string, v *Value) *Value {
	if base.ref == nil {
		return v
	}
	for _, site := range e.sites("setattr", "") {
		args := site.Node.Args()
		if site.Scope.File != base.ref.file || site.Scope.Class != base.ref.node || len(args) != 3 || args[0].Dotted() != "self" || e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		k := e.expr(args[1], site.Scope, nil)
		delete(e.active, site.Node)
		if k.Kind != Str || k.Text == name {
			return unknown("what setattr puts into "+name, site.Scope.File.At(site.Node))
		}
	}
	return v
}

// fieldDefault reads x: T = field(default=…) and field(default_factory=…) of a
// data class, also where a function of the tree makes the field; nil for any
// other one.
func (e *Eval) fieldDefault(b *code.Binding, inside *code.Scope) *Value {
	if !b.Value.Is(code.Call) {
		return nil
	}
	v := e.expr(b.Value, inside, nil)
	if v.Kind != External || v.Text != "dataclasses.field()" || v.ref == nil {
		return nil
	}
	if d := v.ref.keys["default"]; d != nil {
		return d
	}
	if fn := v.ref.keys["default_factory"]; fn != nil && fn.Kind == Func {
		return e.invoke(fn, nil, nil, nil)
	}
	return nil
}

// Base gives the class from outside that a class of the tree comes from; nil
// where there is none.
func (e *Eval) Base(v *Value) *Value {
	if list := e.Bases(v); len(list) > 0 {
		return list[0]
	}
	return nil
}

// Bases lists the classes from outside that a class of the tree comes from.
func (e *Eval) Bases(v *Value) []*Value {
	var list []*Value
	for depth := 0; v != nil && v.Kind == Class && v.ref != nil && depth < 6; depth++ {
		var next *Value
		for _, b := range v.ref.node.Kid(0).Kids {
			if b.Is(code.Keyword) {
				continue
			}
			bv := e.expr(b, v.ref.scope, nil)
			if bv.Kind == External {
				list = append(list, bv)
			}
			if bv.Kind == Class && next == nil {
				next = bv
			}
		}
		v = next
	}
	return list
}

// Tuple gives an object of a class of named fields as the list that it also is
// (Python's library reference, typing.NamedTuple); any other value as it is.
func (e *Eval) Tuple(v *Value) *Value {
	if v == nil || v.Kind != Instance || v.ref == nil || v.ref.file.Lang != code.Python {
		return v
	}
	class := *v
	class.Kind = Class
	if b := e.Base(&class); b == nil || b.Text != "typing.NamedTuple" {
		return v
	}
	list := &Value{Kind: List, At: v.At}
	for _, n := range v.ref.node.Kid(1).Kids {
		if n.Is(code.Bind) && n.Kid(0).Is(code.Name) {
			w := e.attribute(v, n.Kids[0].Name, nil)
			if w == nil {
				return v
			}
			list.Kids = append(list.Kids, w)
		}
	}
	return list
}

// Name puts in what the call of a value was given by name.
func (v *Value) Name(keys map[string]*Value) {
	v.Keys = slices.Sorted(maps.Keys(keys))
	v.ref = &ref{keys: keys}
}

// Keyword is what the call that made a value from outside was given under a
// name; nil for none.
func (v *Value) Keyword(name string) *Value {
	if v.ref == nil {
		return nil
	}
	return v.ref.keys[name]
}

// Given lists what an object of the tree was made of, by place and by keyword.
func (v *Value) Given() []*Value {
	if v.ref == nil {
		return nil
	}
	list := append([]*Value(nil), v.ref.args...)
	for _, k := range slices.Sorted(maps.Keys(v.ref.keys)) {
		list = append(list, v.ref.keys[k])
	}
	return list
}

// property reports whether a method of a Python class is read like a field.
func property(fn *code.Node) bool {
	return decorated(fn, "property") || decorated(fn, "cached_property") || decorated(fn, "functools.cached_property")
}

// decorated reports whether a decorator of this name stands before a function of
// Python.
func decorated(fn *code.Node, name string) bool {
	return slices.ContainsFunc(fn.Kids[min(2, len(fn.Kids)):], func(d *code.Node) bool { return d.Dotted() == name })
}

// settingsBases are the classes whose fields are environment variables by
// convention (documentation of pydantic-settings 2, "Field value priority").
var settingsBases = map[string]bool{"pydantic_settings.BaseSettings": true, "pydantic.BaseSettings": true, "pydantic.v1.BaseSettings": true}

// isSettings reports whether a class is, or comes from, a settings class.
func (e *Eval) isSettings(file *code.File, class *code.Node, scope *code.Scope, depth int) bool {
	for _, b := range class.Kid(0).Kids {
		if b.Is(code.Keyword) || depth > 5 {
			continue
		}
		bv := e.expr(b, scope, nil)
		if bv.Kind == External && settingsBases[bv.Text] {
			return true
		}
		if bv.Kind == Class && bv.ref != nil && e.isSettings(bv.ref.file, bv.ref.node, bv.ref.scope, depth+1) {
			return true
		}
	}
	return false
}

// settingsField reads a field of a settings class as the variable that
// decides it. Names are compared without their letter case.
func (e *Eval) settingsField(base *Value, name string, inside *code.Scope) *Value {
	r := base.ref
	if base.Kind != Instance || r.file.Lang != code.Python || len(inside.Names[name]) == 0 || !e.isSettings(r.file, r.node, r.scope, 0) {
		return nil
	}
	b := inside.Names[name][0]
	if b.Kind == "func" || strings.HasPrefix(name, "model_") {
		return nil
	}
	cfg := settingsConfig(r.file, inside)
	names := []string{cfg.prefix + name}
	fallback := &Value{Kind: Unknown}
	hasDefault := b.Value != nil
	var declared *code.Node
	for _, k := range r.node.Kid(1).Kids {
		if k.Is(code.Bind) && k.Kid(0).Is(code.Name) && k.Kids[0].Name == name {
			declared = k
		}
	}
	call, annotated := b.Value, false
	if more := declared.Kid(2); more.Is(code.Call) {
		call, annotated = more, true
	}
	if call.Is(code.Call) && strings.HasSuffix(call.Kid(0).Dotted(), "Field") {
		if annotated && hasDefault {
			fallback = e.expr(b.Value, inside, nil)
		}
		hasDefault = hasDefault && annotated
		for i, a := range call.Args() {
			switch {
			case i == 0 && !a.Is(code.Keyword) && !annotated, a.Is(code.Keyword) && (a.Name == "default" || a.Name == "default_factory"):
				x := a
				if a.Is(code.Keyword) {
					x = a.Kid(0)
				}
				if a.Name == "default_factory" {
					x = &code.Node{Kind: code.Call, Off: x.Off, End: x.End, Kids: []*code.Node{x}}
				}
				if !x.Is(code.Unknown) { // Field(...) has none
					fallback, hasDefault = e.expr(x, inside, nil), true
				}
			case a.Is(code.Keyword) && (a.Name == "alias" || a.Name == "validation_alias" || a.Name == "env"):
				var other []string
				a.Kid(0).Walk(func(k *code.Node) bool { // AliasChoices: any of them
					if k.Is(code.String) {
						other = append(other, k.Name)
					}
					return true
				})
				if len(other) > 0 {
					names = other
				}
			}
		}
	} else if hasDefault {
		fallback = e.expr(b.Value, inside, nil)
	}
	at := r.file.Lines.Span(r.file.Name, int(b.Off), int(b.Off)+len(name))
	if validated(r.node, name) {
		return unknown("what a validator makes of "+name, at)
	}
	if fallback.Kind == Instance && fallback.ref != nil {
		whole := &Value{Kind: Env, Text: cfg.cased(cfg.prefix + name), Unset: ReadsNull, Fold: cfg.fold, At: at}
		return e.nestedSettings(fallback, cfg.prefix+name+cfg.nested, cfg, 0, op("json", true, at, whole))
	}
	for _, n := range names { // a file stands behind the environment
		if v := cfg.inFile(e, n); v != nil {
			fallback, hasDefault = v.as(fallback), true
			break
		}
	}
	out := fallback
	for i := len(names) - 1; i >= 0; i-- {
		v := &Value{Kind: Env, Text: cfg.cased(names[i]), Unset: ReadsNull, Fold: cfg.fold, At: at}
		if !hasDefault && i == len(names)-1 {
			v.Unset = Raises
			out = v
			continue
		}
		out = op("unset", true, at, v, out)
	}
	// The declared type converts; a number stays one where the default is one.
	switch {
	case declared != nil && declared.Alias == "int" && (!hasDefault || fallback.Kind != Null && fallback.Kind != Unknown):
		return out.convertSet("int")
	case hasDefault && fallback.Kind == Num:
		return out.convertSet("int")
	case hasDefault && fallback.Kind == Bool:
		return out.convertSet("truthy")
	}
	return out
}

// validated reports whether a function of a settings class makes something else of
// a field before it is converted (pydantic 2, "Validators": the mode before; pydantic
// 1: pre).
func validated(class *code.Node, name string) bool {
	for _, k := range class.Kid(1).Kids {
		if !k.Is(code.Func) {
			continue
		}
		for _, d := range k.Kids[min(2, len(k.Kids)):] {
			if !d.Is(code.Call) {
				continue
			}
			kind := Tail(d.Kid(0).Dotted(), 1)
			before, named := false, kind == "root_validator" || kind == "model_validator"
			for _, a := range d.Args() {
				switch {
				case a.Is(code.Keyword) && (a.Name == "pre" && a.Kid(0).Is(code.True) || a.Name == "mode" && a.Kid(0).Is(code.String) && a.Kids[0].Name == "before"):
					before = true
				case a.Is(code.String):
					named = named || a.Name == name || a.Name == "*"
				}
			}
			if before && named && strings.HasSuffix(kind, "validator") {
				return true
			}
		}
	}
	return false
}

// settingsOf is what a settings class says of itself (pydantic-settings 2,
// "Settings management").
type settingsOf struct {
	prefix, nested, file string
	fold                 bool
}

func settingsConfig(f *code.File, inside *code.Scope) settingsOf {
	c := settingsOf{fold: true}
	take := func(name string, v *code.Node) {
		switch {
		case name == "case_sensitive" && v.Is(code.True):
			c.fold = false
		case !v.Is(code.String):
		case name == "env_prefix":
			c.prefix = v.Name
		case name == "env_nested_delimiter":
			c.nested = v.Name
		case name == "env_file":
			c.file = v.Name
		}
	}
	if cfg := inside.Names["model_config"]; len(cfg) > 0 {
		if call := cfg[0].Value; call.Is(code.Call) || call.Is(code.Object) {
			for _, a := range call.Kids {
				take(a.Name, a.Kid(0))
			}
		}
	}
	if cfg := inside.Names["Config"]; len(cfg) > 0 && cfg[0].Value.Is(code.Class) {
		if in := f.Inside[cfg[0].Value]; in != nil {
			for name, bs := range in.Names {
				take(name, bs[0].Value)
			}
		}
	}
	return c
}

// cased is the name of a variable as it is shown: where its letter case does
// not count, in capitals.
func (c settingsOf) cased(name string) string {
	if c.fold {
		return strings.ToUpper(name)
	}
	return name
}

// inFile is what the dotenv file of the settings holds under a name.
func (c settingsOf) inFile(e *Eval, name string) *Value {
	if c.file == "" {
		return nil
	}
	for _, n := range e.Loader.Data(joined2(e.Dir, c.file)).Items() {
		if n.Key == name || c.fold && strings.EqualFold(n.Key, name) {
			return FromDocument(n).with(Step{n.At(), c.file})
		}
	}
	return nil
}

// as is a text in the form of another value: a number where that is one.
func (v *Value) as(other *Value) *Value {
	if other.Kind == Num || other.Kind == Bool {
		return op(map[Kind]string{Num: "int", Bool: "truthy"}[other.Kind], true, v.At, v)
	}
	return v
}

// nestedSettings gives an object of a model whose fields are variables of their
// own, WEB__PORT of web.port, or fields of one that holds JSON.
func (e *Eval) nestedSettings(v *Value, prefix string, cfg settingsOf, depth int, whole *Value) *Value {
	o := &Value{Kind: Object, Text: v.Text, At: v.At}
	for _, n := range v.ref.node.Kid(1).Kids {
		if !n.Is(code.Bind) || !n.Kid(0).Is(code.Name) || depth > 4 {
			continue
		}
		name := n.Kids[0].Name
		def := e.attribute(v, name, nil)
		if def == nil {
			def = &Value{Kind: Undef, At: v.At}
		}
		field := op("jsonfield", true, def.At, whole, text(name, def.At))
		if def.Kind == Instance && def.ref != nil {
			o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, e.nestedSettings(def, prefix+name+cfg.nested, cfg, depth+1, field))
			continue
		}
		file := cfg.inFile(e, prefix+name)
		source := whole
		for source.Text == "jsonfield" {
			source = source.Kids[0]
		}
		given := op("isset", true, def.At, source.Kids[0])
		r := op("??", true, def.At, &Value{Kind: Cond, Py: true, At: def.At, Kids: []*Value{given, field, {Kind: Undef, At: def.At}}}, def)
		if cfg.nested != "" {
			if file != nil { // a field of its own stands before one in JSON
				r = file.as(def)
			}
			env := &Value{Kind: Env, Text: cfg.cased(prefix + name), Unset: ReadsNull, Fold: cfg.fold, At: def.At}
			r = op("unset", true, def.At, env, r)
		}
		switch def.Kind {
		case Num:
			r = r.convertSet("int")
		case Bool:
			r = r.convertSet("truthy")
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, r)
	}
	return o
}

// convertSet converts what an `unset` operation gives.
func (v *Value) convertSet(conv string) *Value {
	return op(conv, true, v.At, v)
}

// SettingsClass gives the variables behind the fields of a settings class, in
// the order of the source; none for other classes.
func (e *Eval) SettingsClass(f *code.File, class *code.Node) []*Value {
	inside := f.Inside[class]
	if f.Lang != code.Python || inside == nil || !e.isSettings(f, class, f.Top, 0) {
		return nil
	}
	var list []*Value
	base := &Value{Kind: Instance, Text: class.Name, ref: &ref{file: f, node: class, scope: f.Top}}
	for _, n := range class.Kid(1).Kids {
		if n.Is(code.Bind) && n.Kid(0).Is(code.Name) {
			if v := e.settingsField(base, n.Kids[0].Name, inside); v != nil {
				list = append(list, v)
			}
		}
	}
	return list
}

// putOn is what a file writes into a property of something from outside before
// it reads it back: app.locals.port = 80. nil for all else.
func (e *Eval) putOn(n *code.Node, s *code.Scope) *Value {
	f := s.File
	if !javascript(f.Lang) || len(f.Sets) == 0 || !n.Kid(0).Is(code.Member) {
		return nil
	}
	var found *code.Site
	for i, site := range f.Sets {
		if x := site.Node; x.Is(code.Member) && x.Name == n.Name && x.Off < n.Off && len(site.Guards) == 0 && x.Kid(0).Is(code.Member) && x.Dotted() == n.Dotted() && n.Dotted() != "" {
			found = &f.Sets[i]
		}
	}
	if found == nil || e.busy(found.Node) {
		return nil
	}
	e.active[found.Node] = true
	defer delete(e.active, found.Node)
	if base := e.expr(n.Kids[0], s, nil); base.Kind != External {
		return nil
	}
	return e.Expr(found.Value, found.Scope).with(Step{f.At(found.Node), f.Text(found.Node)})
}

// Parameters is how many parameters a function of the tree has; 0 for anything else.
func (v *Value) Parameters() int {
	if v.Kind != Func || v.ref == nil || v.ref.node == nil {
		return 0
	}
	params := v.ref.node.Kid(0)
	if !params.Is(code.Params) {
		return 0
	}
	return len(params.Kids)
}
