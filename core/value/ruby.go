package value

import (
	"maps"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// rubyCall evaluates ENV.fetch and conversions of Ruby (documentation of its
// core classes, Ruby 3.4); nil for any other call.
func (e *Eval) rubyCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if callee.Is(code.Name) && callee.Name == "String" && len(n.Kids) == 2 {
		return op("String", true, at, e.expr(n.Kids[1], s, c))
	}
	if callee.Is(code.Name) && callee.Name == "Integer" {
		args, keys := e.args(n, s, c)
		if len(args) == 1 || len(args) == 2 && args[1].Kind == Num && args[1].Num == 10 {
			v := op("int", true, at, args[0])
			if x := keys["exception"]; x != nil && x.Kind == Bool && x.Num == 0 {
				return op("catch", true, at, v, &Value{Kind: Null, At: at})
			}
			return v
		}
	}
	if callee.Is(code.Name) {
		switch callee.Name {
		case "new": // of the class itself
			if b := e.this(s, c); b != nil && b.ref != nil && s.Func != nil && s.Func.Flag&code.Static != 0 {
				class := *b
				class.Kind = Class
				args, keys := e.args(n, s, c)
				return e.rubyNew(&class, args, keys, at)
			}
		case "abort", "exit", "exit!", "raise", "fail":
			return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
		}
	}
	if !callee.Is(code.Member) {
		return nil
	}
	switch callee.Name {
	case "new":
		b := e.expr(callee.Kid(0), s, c)
		args, keys := e.args(n, s, c)
		if b.Kind == Class {
			return e.rubyNew(b, args, keys, at)
		}
		if b.Kind == External && (b.Text == "Struct.new()" || b.Text == "Data.define()") {
			o := &Value{Kind: Object, At: at}
			i := 0
			for _, k := range b.Kids {
				if k.Kind != Str {
					continue
				}
				v := keys[k.Text]
				if v == nil && i < len(args) {
					v = args[i]
				}
				i++
				if v != nil {
					o.Keys, o.Kids = append(o.Keys, k.Text), append(o.Kids, v)
				}
			}
			return o
		}
		if b.Kind == External && b.Text == "OpenStruct" {
			o := &Value{Kind: Object, At: at}
			for _, a := range args {
				o.spread(a, false)
			}
			for _, k := range slices.Sorted(maps.Keys(keys)) {
				o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, keys[k])
			}
			return o
		}
	case "fetch", "dig":
		if b := e.expr(callee.Kid(0), s, c); callee.Name == "dig" && len(n.Kids) > 2 && b.Kind == Object {
			for _, a := range n.Args() {
				k := e.expr(a, s, c)
				if k.Kind != Str {
					return unknown("an element chosen while the program runs", at)
				}
				if b = e.key(b, k.Text, s, c, at); b.Kind == Undef {
					return &Value{Kind: Null, At: at}
				}
			}
			return b
		} else if b.objects(0) && n.Kid(1) != nil {
			k := e.expr(n.Kids[1], s, c).folded()
			def := &Value{Kind: Null, At: at}
			switch d := n.Kid(2); {
			case d.Is(code.Func):
				if def = e.expr(d, s, c); def.Kind == Func {
					def = e.invoke(def, []*Value{k}, nil, c)
				}
			case d != nil && callee.Name == "fetch":
				def = e.expr(d, s, c)
			case callee.Name == "fetch":
				def = &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
			}
			if k.Kind == Str {
				return b.ofEach(func(o *Value) *Value { return o.held(k.Text, def) })
			}
			if b.Kind == Object && len(k.Variables()) > 0 && len(b.Keys) <= 24 && !slices.Contains(b.Keys, "...") && (n.Kid(2) == nil || callee.Name == "fetch") {
				return pickOr(k, b, def)
			}
		}
	case "key?", "include?", "has_key?", "member?":
		if b := e.expr(callee.Kid(0), s, c); b.Kind == EnvMap && n.Kid(1) != nil {
			if k := e.expr(n.Kids[1], s, c); k.Kind == Str {
				return op("isset", true, at, &Value{Kind: Env, Text: k.Text, At: at})
			}
		} else if n.Kid(1) != nil {
			k := e.expr(n.Kids[1], s, c)
			if b.Kind == Object && k.Kind == Str && !slices.Contains(b.Keys, "...") {
				return b.Get(k.Text).present(at)
			}
			return op("in", true, at, k, b)
		}
	case "end_with?", "delete_prefix", "delete_suffix", "gsub", "sub":
		args, _ := e.args(n, s, c)
		return textCall(callee.Name, append([]*Value{e.expr(callee.Kid(0), s, c)}, args...), code.Ruby, at)
	case "start_with?":
		return op("startswith", true, at, e.expr(callee.Kid(0), s, c), e.expr(n.Kid(1), s, c))
	case "values_at":
		if b := e.expr(callee.Kid(0), s, c); b.Kind == Object {
			v := &Value{Kind: List, At: at}
			for _, a := range n.Args() {
				x := b.Get(e.expr(a, s, c).literal())
				if x == nil {
					x = &Value{Kind: Null, At: at}
				}
				v.Kids = append(v.Kids, x)
			}
			return v
		} else if b.Kind == Cond && len(n.Args()) > 0 {
			v := &Value{Kind: List, At: at}
			for _, a := range n.Args() {
				v.Kids = append(v.Kids, e.key(b, e.expr(a, s, c).literal(), s, c, at))
			}
			return v
		}
		return unknown("several variables at once", at)
	case "load_file", "safe_load_file", "parse", "safe_load", "load":
		for _, a := range n.Args() {
			v := e.expr(a, s, c)
			d := e.openedData(v, at)
			if d == nil && strings.HasSuffix(callee.Name, "_file") {
				d = e.fromNamed(v, at)
			}
			if d != nil {
				return d
			}
		}
	case "then", "yield_self":
		if f := n.Kid(1); f.Is(code.Func) {
			if fn := e.expr(f, s, c); fn.Kind == Func {
				return e.invoke(fn, []*Value{e.expr(callee.Kid(0), s, c)}, nil, c)
			}
		}
	case "to_i":
		if n.Kid(1) == nil {
			return e.rubyConversion(callee, s, c)
		}
	case "merge":
		if b := e.expr(callee.Kid(0), s, c); b.Kind == Object {
			o := &Value{Kind: Object, At: at}
			o.spread(b, false)
			args, keys := e.args(n, s, c)
			for _, a := range args {
				o.spread(a, false)
			}
			for _, k := range slices.Sorted(maps.Keys(keys)) {
				o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, keys[k])
			}
			return o
		}
	}
	if callee.Name == "fetch" && n.Kid(1) != nil && (callee.Kid(0).Is(code.Name) && callee.Kids[0].Name == "ENV" || e.expr(callee.Kid(0), s, c).Kind == EnvMap) {
		name := e.expr(n.Kids[1], s, c)
		if name.Kind != Str {
			return unknown("a variable whose name is made while the program runs", at)
		}
		def := n.Kid(2)
		if def.Is(code.Func) { // a block gives it
			if body := def.Kid(1); body.Is(code.Block) && len(body.Kids) == 1 && body.Kids[0].Is(code.ExprStmt) {
				def = body.Kids[0].Kid(0)
			} else {
				return unknown("what a block gives for "+name.Text, at)
			}
		}
		v := e.assigned(&Value{Kind: Env, Text: name.Text, Unset: Raises, At: at})
		if def == nil {
			return v
		}
		v.Unset = ReadsNull
		return op("unset", true, at, v, e.expr(def, s, c))
	}
	return e.rubyConversion(callee, s, c)
}

const notGiven = "a flag that is not given"

// rubyOption gives the parameter of the block of an option (OptionParser): what
// the start command passes for the flag.
func (e *Eval) rubyOption(b *code.Binding, s *code.Scope) *Value {
	for _, site := range s.File.Calls {
		n := len(site.Node.Kids)
		if fn := site.Node.Kid(0); !fn.Is(code.Member) || fn.Name != "on" || n < 3 || site.Node.Kids[n-1] != b.Func {
			continue
		}
		var flags []string
		for _, a := range site.Node.Args() {
			if a.Is(code.String) && strings.HasPrefix(a.Name, "-") {
				flag, _, _ := strings.Cut(strings.ReplaceAll(a.Name, "=", " "), " ")
				flags = append(flags, flag)
			}
		}
		if v := e.given(flags); v != nil {
			return v
		}
		return &Value{Kind: Undef, Text: notGiven}
	}
	return nil
}

// safely reports whether a method is called with &., which gives nil on nil.
func safely(f *code.File, n *code.Node) bool {
	k := n.Kid(0)
	return k != nil && int(k.End) < len(f.Src) && f.Src[k.End] == '&'
}

// rubyConversion evaluates x.to_i and its like, which need no parentheses: what
// is no number gives 0.
func (e *Eval) rubyConversion(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	base := func() *Value { return e.expr(n.Kid(0), s, c) }
	switch n.Name {
	case "to_i":
		b := base()
		v := op("||", false, at, op("parseInt", false, at, b), number(0, at))
		if safely(s.File, n) {
			return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("nothing", true, at, b), {Kind: Null, At: at}, v}}
		}
		return v
	case "to_s":
		b := base()
		return op("concat", true, at, op("??", true, at, b, text("", at)))
	case "to_sym", "freeze", "dup", "to_str", "itself":
		return base()
	case "to_h", "to_hash":
		if b := base(); b.Kind == EnvMap || b.Kind == Object {
			return b
		}
	case "compact", "compact!":
		if b := base(); b.Kind == Object {
			return b.without(func(v *Value) *Value { return missing(v, at) })
		}
	case "strip", "chomp":
		return op("strip", true, at, base())
	case "downcase":
		return op("lower", true, at, base())
	case "upcase":
		return op("upper", true, at, base())
	case "nil?":
		return op("nothing", true, at, base())
	case "empty?":
		return op("empty", true, at, base())
	case "blank?":
		return op("blank", true, at, base())
	case "present?":
		return op("!", true, at, op("blank", true, at, base()))
	case "presence":
		b := base()
		return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("blank", true, at, b), {Kind: Null, At: at}, b}}
	case "zero?":
		return op("===", true, at, base(), number(0, at))
	case "positive?":
		return op(">", true, at, base(), number(0, at))
	case "length", "size", "count":
		if b := base(); b.Kind == External && b.Text == "main.args" {
			return e.arguments(at)
		} else if b.Kind == List || b.Kind == Str {
			return op("length", true, at, b)
		}
	case "first", "shift":
		if b := base(); b.Kind == External && b.Text == "main.args" {
			return e.argumentOr(0, at)
		} else if b.Kind == List && len(b.Kids) > 0 {
			return b.Kids[0]
		}
	case "any?":
		if b := base(); b.Kind == External && b.Text == "main.args" {
			return op(">", true, at, e.arguments(at), number(0, at))
		}
	case "new":
		if b := base(); b.Kind == Class {
			return e.rubyNew(b, nil, map[string]*Value{}, at)
		}
	}
	return nil
}

func (e *Eval) rubyNew(class *Value, args []*Value, keys map[string]*Value, at place.Span) *Value {
	r := *class.ref
	r.args, r.keys = args, keys
	return &Value{Kind: Instance, Text: class.Text, At: at, ref: &r, Steps: class.Steps}
}

// argumentOr is an argument of the command line, or nil.
func (e *Eval) argumentOr(i int, at place.Span) *Value {
	if i < 0 || i >= len(e.Args) {
		return &Value{Kind: Null, At: at}
	}
	if a := e.Args[i]; a.Kind != Str { // without quotes an empty variable leaves no argument
		return op("||", false, a.At, a, &Value{Kind: Null, At: at})
	}
	return e.Args[i]
}

// rubyValue is what a name comes to where it is read: a method without
// arguments is called, but for the one that the call at hand gives arguments.
func (e *Eval) rubyValue(n *code.Node, v *Value, c *context) *Value {
	if n != e.calling && v != nil && v.Kind == Func && v.ref != nil && v.Text != "" && v.ref.node.Name != "" {
		return e.invoke(v, nil, map[string]*Value{}, c)
	}
	return v
}

// implicit gives what a function comes to whose last expression is its value.
func (e *Eval) implicit(list []*code.Node, s *code.Scope, c *context) *Value {
	return e.implicitThen(list, s, c, nil)
}

// implicitThen gives what a list of statements comes to: what it returns, and
// at its end its last expression, or, where something follows, that.
func (e *Eval) implicitThen(list []*code.Node, s *code.Scope, c *context, then func() *Value) *Value {
	for i, n := range list {
		last := i == len(list)-1 && then == nil
		rest := once(func() *Value { return e.implicitThen(list[i+1:], s, c, then) })
		switch n.Kind {
		case code.Return:
			return e.expr(n.Kid(0), s, c)
		case code.Throw:
			return &Value{Kind: Env, Text: "\x00", Unset: Raises}
		case code.ExprStmt:
			if last {
				return e.expr(n.Kid(0), s, c)
			}
		case code.Bind:
			if last {
				return e.expr(n.Kid(1), s, c)
			}
		case code.Block:
			if last {
				if v := e.implicitThen(n.Kids, s, c, nil); v != nil {
					return v
				}
			} else if returns(n) {
				return e.implicitThen(n.Kids, s, c, rest)
			}
		case code.If:
			if !last && !returns(n) {
				continue
			}
			after := rest
			if last {
				after = nil
			}
			branch := func(b *code.Node) *Value {
				var v *Value
				switch {
				case b == nil && after != nil:
					v = after()
				case b == nil:
				case b.Is(code.Block):
					v = e.implicitThen(b.Kids, s, c, after)
				default:
					v = e.implicitThen([]*code.Node{b}, s, c, after)
				}
				if v == nil {
					v = &Value{Kind: Null}
				}
				return v
			}
			yes, no := branch(n.Kid(1)), branch(n.Kid(2))
			return &Value{Kind: Cond, Py: true, At: yes.At, Kids: []*Value{e.test(n.Kid(0), s, c), yes, no}}
		case code.Try:
			if !last && !returns(n) {
				continue
			}
			after := rest
			if last {
				after = nil
			}
			v := e.implicitThen(n.Kid(0).Kids, s, c, after)
			if v == nil {
				continue
			}
			var alt *Value = &Value{Kind: Null}
			if h := n.Kid(2); h != nil && h.Name == "catch" { // by the class of the error
				alt = unknown("which error it was", s.File.At(n))
			} else if h := n.Kid(1); h != nil && h.Name == "catch" {
				if w := e.implicitThen(h.Kids, s, c, after); w != nil {
					alt = w
				}
			}
			return op("catch", true, v.At, v, alt)
		case code.Loop:
			if returns(n) {
				return unknown("what a loop returns", s.File.At(n))
			}
		}
	}
	if then != nil {
		return then()
	}
	return nil
}

// returns reports whether a statement holds one that returns.
func returns(n *code.Node) bool {
	found := false
	n.Walk(func(k *code.Node) bool {
		found = found || k.Is(code.Return) || k.Is(code.Throw) || code.Ends(k)
		return !found && !k.Is(code.Func)
	})
	return found
}

// rubyName gives names that Ruby has by itself, constants of other files, and
// sinatraMode is what an application of Sinatra says of its environment; nil for
// any other name (Sinatra, "Environments").
func (e *Eval) sinatraMode(name string, at place.Span) *Value {
	w, ok := sinatraModes[name]
	if !ok && name != "environment" || !e.usesLibrary("sinatra") {
		return nil
	}
	rack := Or(Variable("RACK_ENV", ReadsUndef, at), text("development", at), at)
	mode := Or(Variable("APP_ENV", ReadsUndef, at), rack, at)
	if !ok {
		return mode
	}
	return op("===", true, at, mode, text(w, at))
}

// members of the class around.
func (e *Eval) rubyName(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	if v := e.sinatraMode(n.Name, at); v != nil {
		return v
	}
	switch n.Name {
	case "ENV":
		return &Value{Kind: EnvMap, Unset: ReadsNull, At: at}
	case "ARGV":
		return &Value{Kind: External, Text: "main.args", At: at}
	}
	for x := s; x != nil; x = x.Parent {
		if x.Class == nil || x.Func != nil {
			continue
		}
		this := e.this(s, c)
		if this == nil || this.ref == nil || this.ref.node != x.Class {
			this = &Value{Kind: Instance, Text: x.Class.Name, ref: &ref{file: s.File, node: x.Class, scope: s.File.Top}}
		}
		if v := e.attribute(this, n.Name, c); v != nil && v.Kind != External {
			return e.rubyValue(n, v, c)
		}
	}
	for _, g := range e.Loader.Loaded() {
		if g == s.File || g.Lang != code.Ruby {
			continue
		}
		if cls := g.Classes[n.Name]; cls != nil {
			return &Value{Kind: Class, Text: n.Name, At: g.At(cls), ref: &ref{file: g, node: cls, scope: g.Top}}
		}
		if v := e.topOf(g, n.Name); v != nil {
			return e.rubyValue(n, v, c)
		}
	}
	if cls := s.File.Classes[n.Name]; cls != nil {
		return &Value{Kind: Class, Text: n.Name, At: s.File.At(cls), ref: &ref{file: s.File, node: cls, scope: s.File.Top}}
	}
	if n.Name[0] >= 'A' && n.Name[0] <= 'Z' {
		return &Value{Kind: External, Text: n.Name, At: at}
	}
	return nil
}

// sinatraModes are the methods that ask what a program of Sinatra is run for (its
// README, "Environments").
var sinatraModes = map[string]string{"production?": "production", "development?": "development", "test?": "test"}

// reopened looks for an attribute in the other files that open the same class
// or module.
func (e *Eval) reopened(base *Value, name string, c *context) *Value {
	if base.ref == nil {
		return nil
	}
	for _, g := range e.Loader.Loaded() {
		cls := g.Classes[base.ref.node.Name]
		if g.Lang != code.Ruby || cls == nil || cls == base.ref.node {
			continue
		}
		part, r := *base, *base.ref
		r.file, r.node, r.scope = g, cls, g.Top
		part.ref = &r
		if v := e.attribute(&part, name, c); v != nil {
			return v
		}
	}
	return nil
}

// rubySetting gives settings of figaro, Figaro.env.port: the variable, else
// config/application.yml; and of dry-configurable, Dome.config.port: what is
// set, else the default of `setting :port, default: …` (figaro 1.3,
// dry-configurable 1.3).
func (e *Eval) rubySetting(n *code.Node, s *code.Scope) *Value {
	base := n.Kid(0)
	if !base.Is(code.Member) {
		return nil
	}
	at := s.File.At(n)
	switch {
	case base.Dotted() == "Figaro.env":
		name := strings.ToUpper(strings.TrimRight(n.Name, "!?"))
		var other *Value
		if d := e.Loader.Data(joined2(e.Dir, "config/application.yml")); d != nil {
			for _, k := range d.Items() {
				if strings.EqualFold(k.Key, name) {
					other = FromDocument(k)
				}
			}
		}
		v := EnvOr(name, other, at)
		if strings.HasSuffix(n.Name, "!") && other == nil {
			v.Kids[0].Unset = Raises
		}
		return v
	case base.Name == "config" && base.Kid(0).Is(code.Name):
		for _, f := range e.Loader.Loaded() {
			for _, site := range f.Sets { // Dome.config.port = 1, or in a block of configure
				if site.Node.Is(code.Member) && site.Node.Name == n.Name && (site.Node.Kid(0).Dotted() == base.Dotted() || site.Node.Kid(0).Is(code.Name) && site.Node.Kids[0].Name == "config") && len(site.Guards) == 0 && f.Lang == code.Ruby && !e.busy(site.Node) {
					e.active[site.Node] = true
					v := e.Expr(site.Value, site.Scope)
					delete(e.active, site.Node)
					return v
				}
			}
		}
		for _, site := range e.calls("setting") {
			if site.Scope.File.Lang != code.Ruby || !site.Node.Kid(1).Is(code.String) || site.Node.Kids[1].Name != n.Name || e.busy(site.Node) {
				continue
			}
			e.active[site.Node] = true
			_, keys := e.args(site.Node, site.Scope, nil)
			delete(e.active, site.Node)
			if d := keys["default"]; d != nil {
				return d
			}
		}
	}
	return nil
}
