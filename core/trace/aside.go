package trace

import (
	"slices"
	"strings"

	"ubique/core/code"
)

// A condition that is not known decides little where what stands under it changes
// nothing that counts: it writes a log, or wraps a server. Then it is passed by,
// and what it may have set is not known from there on.

// aside is what code does that may run or not.
type aside struct {
	m     *machine
	s     *scope
	sets  []target // what it may set
	own   map[string]bool
	ends  bool // it ends the program
	fails bool // it does what counts, or what is not understood
	loops int  // it is in so many of its own
	tries int
	block bool // of Ruby
	funcs int  // functions of the tree that it is in
	wary  bool // what is handed to what is not followed may be changed there
}

type target struct {
	n *code.Node
	s *scope
}

// either goes on after a condition that is not known: the branch that ends the
// program is not taken, and of branches that change nothing none.
func (m *machine) either(unknown error, a, b *code.Node, s *scope) error {
	if !opens(unknown) {
		return unknown
	}
	x, y := m.aside(s, 0, a), m.aside(s, 0, b)
	switch {
	case x.fails && y.fails:
		return unknown
	case x.ends && !y.ends && !x.fails:
		_, err := m.statement(b, s)
		return err
	case y.ends && !x.ends && !y.fails:
		_, err := m.statement(a, s)
		return err
	case x.fails || y.fails || x.ends:
		return unknown
	}
	return m.forget(append(x.sets, y.sets...), unknown)
}

// pass goes on after what may have run any number of times.
func (m *machine) pass(unknown error, s *scope, nodes ...*code.Node) error {
	if !opens(unknown) {
		return unknown
	}
	x := m.aside(s, 1, nodes...)
	if x.fails {
		return unknown
	}
	return m.forget(x.sets, unknown)
}

// oneOf is what one of several expressions gives, nobody knows which.
func (m *machine) oneOf(unknown error, s *scope, nodes ...*code.Node) (any, error) {
	if !opens(unknown) {
		return nil, unknown
	}
	x := aside{m: m, s: s, own: map[string]bool{}}
	for _, n := range nodes {
		x.expr(n)
	}
	if x.fails || x.ends || len(x.sets) > 0 {
		return nil, unknown
	}
	return dontKnow(unknown.Error()), nil
}

// oneOfTo sets a target to what it is or to an expression, nobody knows which.
func (m *machine) oneOfTo(unknown error, to, other *code.Node, s *scope) (any, error) {
	v, err := m.oneOf(unknown, s, other)
	if err != nil {
		return nil, err
	}
	return v, m.assign(to, v, s, "")
}

// calmed is what a function gives that could not be followed to its end, where it
// changes nothing but what is its own.
func (m *machine) calmed(f *function, v any, err error) (any, error) {
	if !opens(err) || f.node == nil || f.scope == nil || gives(f.node.Kid(1)) {
		return v, err
	}
	x := m.inside(f, 1)
	if x.fails || x.ends || len(x.sets) > 0 {
		return v, err
	}
	return dontKnow(err.Error()), nil
}

// turned forgets what a function sets that may be called any number of times.
func (m *machine) turned(f *function, name string) {
	if !turning[name] || f.node == nil || f.scope == nil {
		return
	}
	if x := m.inside(f, 1); len(x.sets) > 0 {
		if err := m.forget(x.sets, undecided("what %s calls", name)); err != nil && m.doubt == "" {
			m.doubt = err.Error()
		}
	}
}

// opens reports whether the program may be followed on after something that is not known
// or not understood, where it changes nothing else.
func opens(err error) bool {
	s, ok := err.(*stop)
	return ok && !s.over
}

// forget sets what may have been set to what is not known.
func (m *machine) forget(sets []target, why error) error {
	for _, t := range sets {
		if err := m.assign(t.n, dontKnow(why.Error()), t.s, ""); err != nil {
			return why
		}
	}
	return nil
}

func (m *machine) aside(s *scope, loops int, nodes ...*code.Node) *aside {
	x := &aside{m: m, s: s, own: map[string]bool{}, loops: loops}
	for _, n := range nodes {
		x.statement(n)
	}
	return x
}

// inside is what a function does that is called.
func (m *machine) inside(f *function, depth int) *aside {
	x := &aside{m: m, s: f.scope, own: map[string]bool{"this": true, "self": true}, funcs: depth, block: f.node.Name == ""}
	if depth > 4 {
		x.fails = true
		return x
	}
	for _, p := range paramsOf(f.node.Kid(0)) {
		x.owns(p)
	}
	if f.node.Flag&code.Arrow != 0 {
		x.expr(f.node.Kid(1))
	} else {
		x.statement(f.node.Kid(1))
	}
	return x
}

func (x *aside) owns(n *code.Node) {
	n.Walk(func(k *code.Node) bool {
		if k.Name != "" && (k.Is(code.Name) || k.Is(code.Param)) {
			x.own[k.Name] = true
		}
		return true
	})
}

func (x *aside) statement(n *code.Node) {
	if n == nil || x.fails || x.ends {
		return
	}
	lang := x.s.module.file.Lang
	switch n.Kind {
	case code.Block:
		if n.Name == code.Beside || n.Name == code.Waits {
			x.fails = true
			return
		}
		for _, k := range n.Kids {
			x.statement(k)
		}
	case code.ExprStmt:
		if n.Name == code.Beside {
			x.fails = true
			return
		}
		x.expr(n.Kid(0))
	case code.Bind:
		x.expr(n.Kid(1))
		if javascript(lang) && n.Name != "var" || lang == code.Java && n.Name != "" {
			x.owns(n.Kid(0))
			return
		}
		x.target(n.Kid(0))
	case code.If:
		x.expr(n.Kid(0))
		a := x.branch(n.Kid(1))
		b := x.branch(n.Kid(2))
		x.ends = a && b
	case code.Loop:
		x.loops++
		for i, k := range n.Kids {
			switch {
			case i == 0 && (n.Name == "of" || n.Name == "in" || n.Name == "" && len(n.Kids) == 3):
				if k.Is(code.Bind) {
					x.owns(k.Kid(0))
				} else {
					x.target(k)
				}
			case i == len(n.Kids)-1 || k.Is(code.Block) || k.Is(code.Bind) || k.Is(code.ExprStmt):
				x.branch(k)
			default:
				x.expr(k)
			}
		}
		x.loops--
	case code.Try:
		x.tries++
		for _, k := range n.Kids {
			if _, name, ok := strings.Cut(k.Alias, ":"); ok {
				x.own[name] = true
			}
			x.branch(k)
		}
		x.tries--
	case code.With:
		for i, k := range n.Kids {
			if i == len(n.Kids)-1 || k.Is(code.Bind) {
				x.statement(k)
			} else {
				x.expr(k)
			}
		}
	case code.Switch:
		x.expr(n.Kid(0))
		x.loops++
		for _, c := range n.Kids[min(1, len(n.Kids)):] {
			for _, k := range c.Args() {
				if !k.Is(code.Unknown) {
					x.expr(k)
				}
			}
			x.branch(c.Kid(0))
		}
		x.loops--
	case code.Jump:
		x.fails = x.loops == 0 || n.Name == "global"
	case code.Return:
		for _, k := range n.Kids {
			x.expr(k)
		}
		x.fails = x.fails || x.funcs == 0
	case code.Throw:
		x.expr(n.Kid(0))
		x.end()
	case code.Import:
		if lang != code.Python {
			x.fails = true
		}
		for _, k := range n.Kids {
			x.own[k.Alias], x.own[k.Name] = true, true
		}
	case code.Func:
		if lang == code.Python && len(n.Kids) > 2 {
			x.fails = true // what decorates it may keep it
		}
		x.own[n.Name] = true
	default:
		x.expr(n)
	}
}

// end notes that an error leaves what runs.
func (x *aside) end() {
	switch {
	case x.tries > 0:
	case x.m.trying > 0:
		x.fails = true
	default:
		x.ends = true
	}
}

// branch reads what may run or not, and says whether it ends the program.
func (x *aside) branch(n *code.Node) bool {
	x.statement(n)
	ends := x.ends
	x.ends = false
	return ends
}

func (x *aside) expr(n *code.Node) {
	if n == nil || x.fails || x.ends {
		return
	}
	switch n.Kind {
	case code.Func:
	case code.Class, code.Import, code.Export, code.Switch, code.With:
		x.fails = true
	case code.Return, code.Jump, code.Throw, code.If, code.Try, code.Block, code.Bind, code.ExprStmt, code.Loop: // where statements are expressions
		x.statement(n)
	case code.Assign:
		x.expr(n.Kid(1))
		x.target(n.Kid(0))
	case code.Unary:
		switch n.Name {
		case "++", "--":
			x.target(n.Kid(0))
		case "delete", "del":
			x.fails = true
		default:
			x.expr(n.Kid(0))
		}
	case code.Await:
		if n.Name == code.Yield {
			x.fails = true
		}
		x.expr(n.Kid(0))
	case code.Unknown:
		switch {
		case n.Name == code.Asserted:
			x.expr(n.Kid(0))
		case !strings.HasPrefix(n.Name, code.Pattern):
			x.fails = true
		}
	case code.Call:
		x.call(n)
	case code.New:
		x.made(n)
	case code.Member:
		if x.s.ruby() { // a method without arguments
			x.call(&code.Node{Kind: code.Call, Off: n.Off, End: n.End, Kids: []*code.Node{n}})
			return
		}
		x.expr(n.Kid(0))
	case code.Name: // may be a call
		if x.s.ruby() && !x.own[n.Name] && x.s.find(n.Name) == nil && x.m.declares(n.Name) {
			x.fails = true
		}
		if endings[n.Name] && (x.s.ruby() || x.s.php()) {
			x.ends = true
		}
	default:
		for _, k := range n.Kids {
			x.expr(k)
		}
	}
}

// target notes what is set.
func (x *aside) target(n *code.Node) {
	switch {
	case n.Is(code.Name):
		if x.own[n.Name] {
			return
		}
		if x.s.ruby() && x.block && x.s.find(n.Name) != nil { // a block sees what is around it
			x.sets = append(x.sets, target{n, x.s})
			return
		}
		if x.funcs > 0 && !javascript(x.s.module.file.Lang) && n.Name != "" && n.Name[0] != '@' && n.Name[0] != '$' {
			x.own[n.Name] = true // a function's own
			return
		}
		if x.funcs > 0 && x.s.php() && n.Name != "$this" {
			x.own[n.Name] = true
			return
		}
		x.sets = append(x.sets, target{n, x.s})
	case n.Is(code.Member), n.Is(code.Index):
		front := n
		for front.Is(code.Member) || front.Is(code.Index) {
			if front.Is(code.Index) {
				x.expr(front.Kid(1))
			}
			front = front.Kid(0)
		}
		if !front.Is(code.Name) || x.own[front.Name] {
			x.fails = true
			return
		}
		x.sets = append(x.sets, target{n, x.s})
	case n.Is(code.Array):
		for _, k := range n.Kids {
			x.target(k)
		}
	default:
		x.fails = true
	}
}

func (x *aside) call(n *code.Node) {
	callee := n.Kid(0)
	for _, a := range n.Args() {
		if a.Is(code.Keyword) || a.Is(code.Spread) {
			a = a.Kid(0)
		}
		x.expr(a)
		if x.wary && a.Is(code.Name) && !x.own[a.Name] && !quiet[callee.Name] {
			x.lends(a)
		}
		if a.Is(code.Func) && louder(a) {
			x.fails = true
		}
	}
	name := ""
	switch {
	case callee.Is(code.Name), callee.Is(code.Member):
		name = callee.Name
	case callee.Is(code.Call): // of what a call gives
		x.expr(callee)
		return
	default:
		x.fails = true
		return
	}
	if x.fails {
		return
	}
	if endings[name] && callee.Is(code.Name) || callee.Is(code.Member) && endings[callee.Dotted()] {
		x.ends = true
		return
	}
	if environing[name] || (name == "config" || name == "load") && strings.HasPrefix(strings.ToLower(chain(callee)), "dotenv") {
		x.fails = true
		return
	}
	changes := changing[name] || x.s.ruby() && strings.HasSuffix(name, "!")
	if name == "raise" && x.s.ruby() {
		x.end()
		return
	}
	front := callee
	for front.Is(code.Member) || front.Is(code.Call) || front.Is(code.Index) {
		if front.Is(code.Call) && front != callee {
			x.expr(front)
		}
		front = front.Kid(0)
	}
	if front.Is(code.String) || front.Is(code.Template) || front.Is(code.Number) {
		return
	}
	if !front.Is(code.Name) {
		x.fails = x.fails || loud[name] || changes || x.m.declares(name)
		return
	}
	var held any
	if c := x.s.find(front.Name); c != nil && !x.own[front.Name] {
		held, _ = x.m.read(c)
	}
	if recv := callee.Kid(0); changes && callee.Is(code.Member) && !recv.Is(code.Name) && !strings.Contains(chain(recv), "(") && !x.own[front.Name] {
		switch v, err := x.m.eval(recv, x.s); v.(type) {
		case *envMap, *list, *object, *class:
			x.fails = true
			return
		default:
			x.fails = x.fails || err != nil
		}
	}
	switch v := held.(type) {
	case *envMap:
		x.fails = x.fails || changes
		return
	case *opaque:
		if v.props != nil && changes || name == "set" || x.notes(v.path+strings.TrimPrefix(chain(callee), front.Name), n) {
			x.fails = true
		}
		if !loud[name] || v.path == "" || !x.handsOver(n) {
			return
		}
	case string, integer, float64, bool:
		return
	case *function:
		if callee.Is(code.Name) {
			x.within(v)
			return
		}
	case *object:
		if callee.Kid(0) == front && callee.Is(code.Member) {
			if f := x.m.method(v, name); f != nil {
				x.within(f)
				return
			}
		}
	case nil:
		if x.notes(chain(callee), n) {
			x.fails = true
			return
		}
		if quiet[front.Name] {
			return
		}
	}
	x.fails = x.fails || loud[name] || changes || x.m.declares(name)
}

// lends notes that a variable is handed over: what it holds may be changed there, and in
// PHP the variable too.
func (x *aside) lends(a *code.Node) {
	c := x.s.find(a.Name)
	if c == nil {
		return
	}
	switch c.v.(type) {
	case *object, *list, *envMap:
		x.fails = true
	default:
		if x.s.php() {
			x.sets = append(x.sets, target{a, x.s})
		}
	}
}

// handsOver reports whether a call is given a function.
func (x *aside) handsOver(n *code.Node) bool {
	return slices.ContainsFunc(n.Args(), func(a *code.Node) bool {
		return a.Is(code.Func) || a.Is(code.Name) && x.m.declares(a.Name)
	})
}

// within adds what a function of the tree does.
func (x *aside) within(f *function) {
	if f.node == nil {
		x.fails = true
		return
	}
	y := x.m.inside(f, x.funcs+1)
	x.fails = x.fails || y.fails
	x.sets = append(x.sets, y.sets...)
	if y.ends {
		x.end()
	}
}

func (x *aside) made(n *code.Node) {
	for _, a := range n.Args() {
		x.expr(a)
	}
	c := n.Kid(0)
	if !c.Is(code.Name) && !c.Is(code.Member) || x.m.declares(c.Name) {
		x.fails = true
		return
	}
	path := chain(c)
	if k := x.s.find(strings.SplitN(path, ".", 2)[0]); k != nil {
		if o, ok := k.v.(*opaque); ok {
			path = o.path
		}
	}
	x.fails = x.fails || x.notes(path, n)
}

// notes reports whether a call is one of those that are noted.
func (x *aside) notes(path string, n *code.Node) bool {
	if path == "" || x.m.noted == nil {
		return false
	}
	keep, stays := x.m.noted((&opaque{path: path}).external(spot{x.s.module.file, n}))
	return keep || stays
}

// chain is the path of a callee with the calls in it.
func chain(n *code.Node) string {
	switch {
	case n.Is(code.Name):
		return n.Name
	case n.Is(code.Member):
		return chain(n.Kid(0)) + "." + n.Name
	case n.Is(code.Call):
		return chain(n.Kid(0)) + "()"
	}
	return ""
}

// louder reports whether a function that is handed over may listen.
func louder(f *code.Node) bool {
	found := false
	f.Walk(func(k *code.Node) bool {
		if c := k.Kid(0); k.Is(code.Call) && (c.Is(code.Name) || c.Is(code.Member)) {
			found = found || loud[c.Name] && c.Name != "send" && c.Name != "map" && c.Name != "forEach" && c.Name != "each"
		}
		return !found
	})
	return found
}

// declares reports whether a file that was read has a function, a method or a
// class of a name.
func (m *machine) declares(name string) bool {
	files := m.e.Loader.Loaded()
	if m.declaredNames == nil || m.declaredOf != len(files) {
		m.declaredNames, m.declaredOf = map[string]bool{}, len(files)
		for _, f := range files {
			f.Body.Walk(func(k *code.Node) bool {
				if (k.Is(code.Func) || k.Is(code.Class)) && k.Name != "" {
					m.declaredNames[k.Name] = true
				}
				if k.Is(code.Bind) || k.Is(code.Assign) || k.Is(code.Pair) {
					to, v := k.Kid(0), k.Kid(1)
					if k.Is(code.Pair) {
						to, v = k, k.Kid(0)
					}
					if v.Is(code.Func) || v.Is(code.Class) {
						m.declaredNames[to.Name] = true
					}
				}
				return true
			})
		}
	}
	return m.declaredNames[name]
}
