package code

// collect goes through the nodes of a file once and notes what others ask
// for: scopes and their bindings, calls, imports, exports, assignments.
func collect(f *File) {
	f.Exports = map[string]*Binding{}
	f.Funcs = map[*Node]*Scope{}
	f.Inside = map[*Node]*Scope{}
	f.Classes = map[string]*Node{}
	f.Names = map[string]int{}
	f.Used = map[string]bool{}
	f.Top = &Scope{Names: map[string][]*Binding{}, File: f}
	c := &collector{f: f}
	c.block(f.Body, frame{scope: f.Top})
}

// frame is what surrounds the node at hand.
type frame struct {
	scope  *Scope
	guards []Guard
	inTry  bool
	try    *Node // whose handler goes on after an error
	turn   bool  // in a loop that goes on while something holds
}

func (fr frame) with(test *Node, not bool) frame {
	fr.guards = append(fr.guards[:len(fr.guards):len(fr.guards)], Guard{Test: test, Not: not, Scope: fr.scope})
	return fr
}

type collector struct{ f *File }

func (s *Scope) bind(b *Binding) {
	s.Names[b.Name] = append(s.Names[b.Name], b)
}

// Ends reports whether a statement is a call that ends the program.
func Ends(n *Node) bool { return n.Is(ExprStmt) && leaves(n) }

// leaves reports whether a block always leaves what surrounds it.
func leaves(n *Node) bool {
	if n == nil {
		return false
	}
	if n.Is(Block) {
		return len(n.Kids) > 0 && leaves(n.Kids[len(n.Kids)-1])
	}
	if n.Is(ExprStmt) && n.Kid(0).Is(Call) {
		switch n.Kids[0].Kids[0].Dotted() {
		case "process.exit", "sys.exit", "exit", "os._exit", "os.Exit", "log.Fatal", "log.Fatalf", "log.Fatalln", "log.Panic", "log.Panicf", "panic", "System.exit", "Runtime.getRuntime.halt", "exitProcess", "Environment.Exit", "std.process.exit", "process::exit", "abort", "die", "System.halt", "os.abort":
			return true
		}
	}
	return n.Is(Return) || n.Is(Throw)
}

func (c *collector) block(n *Node, fr frame) {
	if n == nil {
		return
	}
	if !n.Is(Block) {
		c.stmt(n, fr)
		return
	}
	for i, s := range n.Kids {
		if s.Is(Block) && s.Name == "else" && i > 0 && n.Kids[i-1].Is(Loop) && n.Kids[i-1].breaks() {
			// The else of a loop of Python: only where nothing broke out of it.
			c.stmt(s, fr.with(&Node{Kind: Unknown, Off: s.Off, End: s.Off}, false))
			continue
		}
		c.stmt(s, fr)
		if test := asserted(s); test != nil {
			fr = fr.with(test, false)
			fr.guards[len(fr.guards)-1].Exit = !fr.inTry
		}
		if w := fr.leaving(s, 0); w.test != nil {
			fr = fr.with(w.test, true)
			fr.guards[len(fr.guards)-1].Exit = w.exit
		}
	}
}

// breaks reports whether something may break out of a loop.
func (n *Node) breaks() (found bool) {
	n.Walk(func(k *Node) bool {
		found = found || k.Is(Jump) && k.Name == "break"
		return !found && (k == n || !k.Is(Loop) && !k.Is(Func))
	})
	return found
}

// way is how a statement leaves what is around it: always, or where a test
// holds; exit is set where the program ends by that.
type way struct {
	always, exit bool
	test         *Node
}

// or joins two ways of one statement.
func (w way) or(test *Node, x way) way {
	if !x.always && x.test == nil {
		return w
	}
	if !x.always {
		test = joined("&&", test, x.test)
	}
	if w.test == nil {
		return way{exit: x.exit, test: test}
	}
	return way{exit: w.exit && x.exit, test: joined("||", w.test, test)}
}

func joined(sign string, a, b *Node) *Node {
	n := binary(sign, a.Off, a, b)
	n.End = b.End
	return n
}

func negated(n *Node) *Node {
	return &Node{Kind: Unary, Name: "!", Off: n.Off, End: n.End, Kids: []*Node{n}}
}

// leaving says when a statement leaves: an if, a switch, and those inside.
func (fr frame) leaving(s *Node, depth int) (w way) {
	if depth > 6 {
		return w
	}
	inside := func(b *Node) (x way) {
		switch {
		case b == nil:
		case leaves(b):
			x.always, x.exit = true, ends(b, fr.inTry) || fails(b, fr.scope)
		case b.Is(Block):
			for _, k := range b.Kids {
				if y := fr.leaving(k, depth+1); y.test != nil {
					if x.test == nil {
						x = y
					} else {
						x = way{exit: x.exit && y.exit, test: joined("||", x.test, y.test)}
					}
				}
			}
		case b.Is(If): // else if
			x = fr.leaving(b, depth+1)
		}
		return x
	}
	switch s.Kind {
	case If:
		if s.Kid(0) == nil {
			return w
		}
		w = w.or(s.Kids[0], inside(s.Kid(1)))
		if other := inside(s.Kid(2)); other.always || other.test != nil {
			w = w.or(negated(s.Kids[0]), other)
		}
	case Switch:
		for _, k := range s.Kids[min(1, len(s.Kids)):] {
			x := inside(k.Kid(0))
			if !x.always && x.test == nil {
				continue
			}
			test, not := CaseTest(s, k)
			if test == nil {
				return way{}
			}
			if not {
				test = negated(test)
			}
			w = w.or(test, x)
		}
	}
	return w
}

// asserted is what a statement demands, as assert(x) does; nil for all others.
func asserted(s *Node) *Node {
	call := s.Kid(0)
	if !s.Is(ExprStmt) || !call.Is(Call) || len(call.Kids) < 2 {
		return nil
	}
	switch call.Kids[0].Dotted() {
	case "assert", "assert.ok", "invariant", "tiny_invariant", "assert!":
		return call.Kids[1]
	}
	return nil
}

// ends reports whether a block that leaves does so by ending the program: with
// a call, or with an error that nothing catches.
func ends(n *Node, caught bool) bool {
	if n.Is(Block) {
		return len(n.Kids) > 0 && ends(n.Kids[len(n.Kids)-1], caught)
	}
	return n.Is(ExprStmt) || n.Is(Throw) && !caught
}

// ErrorMakers are the calls that make an error, whatever they are given (packages
// fmt and errors of Go 1.26; documentation of pkg/errors and xerrors; std::result
// of Rust 1.95).
var ErrorMakers = map[string]bool{"fmt.Errorf": true, "errors.New": true, "errors.Errorf": true, "xerrors.New": true, "xerrors.Errorf": true, "Err": true}

// fails reports whether a block that leaves ends the program where nothing else
// keeps it alive: it returns from main, or hands an error to the caller.
func fails(n *Node, s *Scope) bool {
	if n.Is(Block) {
		return len(n.Kids) > 0 && fails(n.Kids[len(n.Kids)-1], s)
	}
	if !n.Is(Return) {
		return false
	}
	if fn := s.Func; fn != nil && (fn.Name == "main" || fn.Name == "Main") {
		return true
	}
	if len(n.Kids) == 0 {
		return false
	}
	last := n.Kids[len(n.Kids)-1]
	if last.Is(Array) && len(last.Kids) > 0 {
		last = last.Kids[len(last.Kids)-1]
	}
	switch name := last.Dotted(); {
	case last.Is(Call):
		return ErrorMakers[last.Kid(0).Dotted()]
	case last.Is(Name) && s.File.Lang == Go:
		return len(name) > 2 && name[:3] == "err"
	}
	return false
}

func (c *collector) stmt(n *Node, fr frame) {
	if n == nil {
		return
	}
	switch n.Kind {
	case Block:
		c.block(n, fr)
	case ExprStmt, Return, Throw:
		c.expr(n.Kid(0), fr)
	case Bind:
		if s := c.declaring(n, fr.scope); s != nil {
			sub := fr
			sub.scope = s
			c.bindFrom(n.Kid(0), n.Kid(1), "", "=", sub, fr.scope)
			c.expr(n.Kid(1), fr)
			return
		}
		c.bind(n.Kid(0), n.Kid(1), n.Name, "=", fr)
		if list := fr.scope.Names[n.Kid(0).named()]; len(list) > 0 && c.f.Lang == Java && filled(n) {
			list[len(list)-1].Filled = true
		}
		if n.Flag&Exported != 0 {
			c.export(n.Kid(0), fr)
		}
		c.expr(n.Kid(1), fr)
		for _, d := range n.Kids[min(2, len(n.Kids)):] {
			c.expr(d, fr)
		}
	case If:
		c.expr(n.Kid(0), fr)
		c.block(n.Kid(1), fr.with(n.Kid(0), false))
		c.block(n.Kid(2), fr.with(n.Kid(0), true))
	case Loop, With:
		for i, k := range n.Kids {
			if i == len(n.Kids)-1 {
				in := fr
				in.turn = fr.turn || n.Kind == Loop && n.Name != "of" && n.Name != "in" && n.Name != Times && !(c.f.Lang == Python && len(n.Kids) == 3)
				c.block(k, in)
			} else if k.Is(Bind) || k.Is(Block) {
				c.stmt(k, fr)
			} else {
				if n.Kind == Loop && i == 0 && len(n.Kids) == 3 {
					c.bind(k, nil, "", "loop", fr)
				}
				c.expr(k, fr)
			}
		}
	case Try:
		for i, k := range n.Kids {
			sub := fr
			sub.inTry = fr.inTry || len(n.Kids) > 1 && i < 2
			if h := n.Kid(1); i == 0 && h.Is(Block) && h.Name == "catch" && !leaves(h) {
				sub.try = n
			}
			if k != nil && k.Name == "catch" {
				sub = sub.with(n, false)
			}
			c.block(k, sub)
		}
	case Switch:
		c.expr(n.Kid(0), fr)
		for _, k := range n.Kids[min(1, len(n.Kids)):] {
			for _, v := range k.Kids[min(1, len(k.Kids)):] {
				if v.Is(Unknown) && v.Name == Matched {
					Captured(v.Kids[0], func(name *Node) { c.bind(name, nil, "", "loop", fr) })
				}
				c.expr(v, fr)
			}
			test, not := CaseTest(n, k)
			sub := fr
			if test != nil {
				sub = fr.with(test, not)
			}
			if k.Alias != "" {
				c.bind(&Node{Kind: Name, Name: k.Alias, Off: k.Off, End: k.Off}, n.Kid(0), "", "", sub)
			}
			c.block(k.Kid(0), sub)
		}
	case Func:
		c.declare(n, n.Name, "func", fr)
		c.function(n, fr)
	case Class:
		c.declare(n, n.Name, "class", fr)
		c.class(n, fr)
	case Import:
		c.imports(n, fr)
	case Export:
		c.exports(n, fr)
	default:
		c.expr(n, fr)
	}
}

// CaseTest gives the condition under which a case of a switch runs: the test,
// or with not set its opposite; nil where it cannot be said.
func CaseTest(sw, cs *Node) (test *Node, not bool) {
	from := []*Node{cs}
	if len(cs.Kids) < 2 {
		from, not = sw.Kids[1:], true
	}
	for _, k := range from {
		for _, v := range k.Kids[min(1, len(k.Kids)):] {
			eq := v // without a subject the case is the condition
			if sw.Kids[0] != nil {
				eq = binary("===", v.Off, sw.Kids[0], v)
				eq.End = v.End
			}
			if test == nil {
				test = eq
				continue
			}
			test = binary("||", test.Off, test, eq)
			test.End = v.End
		}
	}
	if sw.Kids[0] == nil && !not && test != nil { // and no case before it
		for _, k := range sw.Kids[1:] {
			if k == cs {
				break
			}
			for _, v := range k.Kids[min(1, len(k.Kids)):] {
				no := &Node{Kind: Unary, Name: "!", Off: v.Off, End: v.End, Kids: []*Node{v}}
				test = binary("&&", test.Off, no, test)
				test.End = v.End
			}
		}
	}
	return test, not
}

func (c *collector) declare(n *Node, name, kind string, fr frame) {
	if name == "" || n.Flag&Method != 0 && kind == "func" {
		return
	}
	b := &Binding{Name: name, Kind: kind, Value: n, Off: n.Off, Guards: fr.guards}
	if kind == "func" {
		b.Func = n
	}
	fr.scope.bind(b)
	if n.Flag&Exported != 0 {
		c.f.Exports[name] = b
	}
}

func (c *collector) export(target *Node, fr frame) {
	target.Walk(func(t *Node) bool {
		if t.Is(Name) {
			if bs := fr.scope.Names[t.Name]; len(bs) > 0 {
				c.f.Exports[t.Name] = bs[len(bs)-1]
			}
		}
		return true
	})
}

// declaring finds the scope that declares what a bare assignment sets, in
// languages in which variables are declared; nil where it is the one at hand.
func (c *collector) declaring(n *Node, s *Scope) *Scope {
	if n.Name != "" || !n.Kid(0).Is(Name) {
		return nil
	}
	switch c.f.Lang {
	case Java, Kotlin, CSharp, Rust, Groovy:
	case Ruby: // a block sees what surrounds it
		if s.Func == nil || s.Func.Name != "" {
			return nil
		}
	default:
		return nil
	}
	for x := s; x != nil; x = x.Parent {
		if _, ok := x.Names[n.Kids[0].Name]; ok {
			if x == s {
				return nil
			}
			return x
		}
		if c.f.Lang == Ruby && x.Func != nil && x.Func.Name != "" {
			return nil
		}
	}
	return nil
}

// bindFrom binds in one scope what is written in another.
func (c *collector) bindFrom(target, value *Node, kind, op string, fr frame, from *Scope) {
	before := map[string]int{}
	target.Walk(func(t *Node) bool {
		if t.Is(Name) {
			before[t.Name] = len(fr.scope.Names[t.Name])
		}
		return true
	})
	c.bind(target, value, kind, op, fr)
	if from == fr.scope {
		return
	}
	for name, n := range before {
		for _, b := range fr.scope.Names[name][n:] {
			b.From = from
		}
	}
}

// bind binds the names of a target to (parts of) a value.
func (c *collector) bind(target, value *Node, kind, op string, fr frame) {
	c.bindPath(target, value, kind, op, nil, nil, fr, 0)
}

// bindParam binds the names of a pattern that stands for a parameter, each with
// the keys that lead to it.
func bindParam(s *Scope, like *Binding, target *Node, depth int) {
	if target == nil || depth > 20 {
		return
	}
	under := func(key string) *Binding {
		b := *like
		b.Path = append(like.Path[:len(like.Path):len(like.Path)], key)
		b.Default = nil
		return &b
	}
	switch target.Kind {
	case Name:
		b := *like
		b.Name, b.Off = target.Name, target.Off
		s.bind(&b)
	case Assign: // with a default
		b := *like
		b.Default = target.Kid(1)
		bindParam(s, &b, target.Kid(0), depth+1)
	case Object:
		for _, p := range target.Kids {
			if p.Is(Pair) {
				bindParam(s, under(p.Name), p.Kid(0), depth+1)
			}
		}
	case Array:
		for i, e := range target.Kids {
			if !e.Is(Spread) {
				bindParam(s, under(itoa(i)), e, depth+1)
			}
		}
	}
}

func (c *collector) bindPath(target, value *Node, kind, op string, path []string, def *Node, fr frame, depth int) {
	if target == nil || depth > 20 {
		return
	}
	switch target.Kind {
	case Name:
		fr.scope.bind(&Binding{Name: target.Name, Kind: kind, Value: value, Path: path, Default: def, Op: op, Off: target.Off, Guards: fr.guards, Try: fr.try, Turn: fr.turn && kind == ""})
	case Assign: // a default in a pattern
		c.bindPath(target.Kid(0), value, kind, op, path, target.Kid(1), fr, depth+1)
	case Spread:
		c.bindPath(target.Kid(0), nil, kind, op, nil, nil, fr, depth+1)
	case Object:
		for _, p := range target.Kids {
			if p.Is(Pair) {
				c.bindPath(p.Kid(0), value, kind, op, append(path[:len(path):len(path)], p.Name), nil, fr, depth+1)
			} else if p.Is(Spread) {
				c.bindPath(p.Kid(0), nil, kind, op, nil, nil, fr, depth+1)
			}
		}
	case Array:
		for i, e := range target.Kids {
			if value.Is(Array) && len(path) == 0 && i < len(value.Kids) {
				c.bindPath(e, value.Kids[i], kind, op, nil, nil, fr, depth+1)
			} else {
				c.bindPath(e, value, kind, op, append(path[:len(path):len(path)], itoa(i)), nil, fr, depth+1)
			}
		}
	}
}

func itoa(i int) string {
	if i < 10 {
		return string(rune('0' + i))
	}
	return itoa(i/10) + string(rune('0'+i%10))
}

func (c *collector) function(n *Node, fr frame) {
	parent := fr.scope
	s := &Scope{Parent: parent, Func: n, Class: parent.Class, Names: map[string][]*Binding{}, File: c.f}
	if parent.Class != nil && parent.Func == nil && c.f.Lang == Python {
		s.Parent = parent.Parent // names of a class body are not seen in its methods
	}
	c.f.Funcs[n] = s
	inner := frame{scope: s, guards: fr.guards, inTry: fr.inTry}
	for i, p := range n.Kid(0).kids() {
		b := &Binding{Name: p.Name, Kind: "param", Value: p.Kid(0), Func: n, Index: i, Off: p.Off}
		if p.Name != "" {
			s.bind(b)
		}
		if pat := p.Kid(1); pat != nil {
			bindParam(s, &Binding{Kind: "param", Value: p.Kid(0), Func: n, Index: i}, pat, 0)
		}
		c.expr(p.Kid(0), inner)
	}
	body := n.Kid(1)
	if n.Flag&Arrow != 0 {
		c.expr(body, inner)
	} else {
		c.block(body, inner)
	}
	for _, d := range n.Kids[min(2, len(n.Kids)):] {
		c.expr(d, fr)
	}
}

func (n *Node) kids() []*Node {
	if n == nil {
		return nil
	}
	return n.Kids
}

func (c *collector) class(n *Node, fr frame) {
	if n.Name != "" {
		c.f.Classes[n.Name] = n
	}
	for _, b := range n.Kid(0).kids() {
		c.expr(b, fr)
	}
	s := &Scope{Parent: fr.scope, Class: n, Names: map[string][]*Binding{}, File: c.f}
	c.f.Inside[n] = s
	inner := frame{scope: s, guards: fr.guards, inTry: fr.inTry}
	for _, m := range n.Kid(1).kids() {
		if m.Is(Func) {
			s.bind(&Binding{Name: m.Name, Kind: "func", Value: m, Func: m, Off: m.Off})
			c.function(m, inner)
			continue
		}
		c.stmt(m, inner)
	}
	for _, d := range n.Kids[min(2, len(n.Kids)):] {
		c.expr(d, fr)
	}
}

// fills are the annotations of fields that a library sets from the command line (picocli
// 4.7; JCommander 1.83; args4j 2.37), by the last part of their names.
var fills = map[string]bool{"Option": true, "Parameters": true, "Parameter": true, "Argument": true, "Mixin": true, "ParentCommand": true}

// filled reports whether a library sets a field that is declared.
func filled(n *Node) bool {
	for _, d := range n.Kids[min(2, len(n.Kids)):] {
		if d.Is(Call) && d.Kid(0) != nil && fills[d.Kids[0].Name] {
			return true
		}
	}
	return false
}

// named is the name that a node is; empty for one that is none.
func (n *Node) named() string {
	if n.Is(Name) {
		return n.Name
	}
	return ""
}

func (c *collector) imports(n *Node, fr frame) {
	c.f.Imports = append(c.f.Imports, Site{Node: n, Scope: fr.scope, Guards: fr.guards, InTry: fr.inTry})
	for _, m := range n.Kids {
		if n.Flag&Exported != 0 {
			if m.Name == "*" && m.Alias == "" {
				c.f.Stars = append(c.f.Stars, n)
				continue
			}
			c.f.Exports[m.Alias] = &Binding{Name: m.Alias, Kind: "import", Import: n, Name2: m, Off: m.Off}
			continue
		}
		if m.Flag&Star != 0 {
			c.f.Stars = append(c.f.Stars, n)
			continue
		}
		fr.scope.bind(&Binding{Name: m.Alias, Kind: "import", Import: n, Name2: m, Off: m.Off, Guards: fr.guards})
	}
}

func (c *collector) exports(n *Node, fr frame) {
	if n.Name != "" { // export default, export =
		d := n.Kid(0)
		b := &Binding{Name: n.Name, Kind: "const", Value: d, Off: n.Off}
		if d.Is(ExprStmt) {
			d = d.Kid(0)
			b.Value = d
		}
		if d.Is(Func) || d.Is(Class) {
			c.stmt(d, fr)
			if d.Is(Func) {
				b.Func = d
			}
		} else {
			c.expr(d, fr)
		}
		c.f.Exports[n.Name] = b
		return
	}
	for _, m := range n.Kids {
		c.f.Exports[m.Alias] = &Binding{Name: m.Alias, Kind: "alias", Value: &Node{Kind: Name, Name: m.Name, Off: m.Off, End: m.End}, Off: m.Off}
		c.f.Names[m.Name]++
	}
}

func (c *collector) expr(n *Node, fr frame) {
	if n == nil {
		return
	}
	switch n.Kind {
	case Name:
		c.f.Names[n.Name]++
		if c.f.Lang == Rust && n.Flag&Address != 0 { // what it is lent to may set it
			c.assign(&Node{Kind: Assign, Name: "=", Off: n.Off, End: n.End, Kids: []*Node{n, {Kind: Unknown, Off: n.Off, End: n.End}}}, fr)
		}
		return
	case Member:
		c.f.Used[n.Name] = true
	case Func:
		if n.Name != "" && n.Flag&Method == 0 {
			fr.scope.bind(&Binding{Name: n.Name, Kind: "func", Value: n, Func: n, Off: n.Off})
		}
		c.function(n, fr)
		return
	case Class:
		c.class(n, fr)
		return
	case Call, New:
		if n.Kid(0).Is(Name) && n.Kids[0].Name == SecondResult {
			return // the call itself stands beside it
		}
		if n.Name == Namespace {
			break
		}
		c.relative(n, fr)
		c.f.Calls = append(c.f.Calls, Site{Node: n, Scope: fr.scope, Guards: fr.guards, InTry: fr.inTry})
		if arg := n.Kid(1); arg.Is(String) && len(n.Kids) >= 2 {
			if fn := n.Kids[0]; fn.Is(Name) && (fn.Name == "require" || fn.Name == "import") || fn.Dotted() == "require.resolve" {
				if c.f.Lang != Python {
					imp := &Node{Kind: Import, Name: arg.Name, Off: arg.Off, End: arg.End, Flag: Static}
					c.f.Imports = append(c.f.Imports, Site{Node: imp, Scope: fr.scope, Guards: fr.guards, InTry: fr.inTry})
				}
			}
		}
	case Assign:
		c.assign(n, fr)
	case Binary:
		if n.Name == "&&" || n.Name == "||" { // short circuits guard their right side
			c.expr(n.Kid(0), fr)
			c.expr(n.Kid(1), fr.with(n.Kid(0), n.Name == "||"))
			return
		}
	case Cond:
		c.expr(n.Kid(0), fr)
		c.expr(n.Kid(1), fr.with(n.Kid(0), false))
		c.expr(n.Kid(2), fr.with(n.Kid(0), true))
		return
	case Pair:
		if k := n.Kid(0); k.Is(Func) && k.Flag&Method != 0 {
			c.function(k, fr)
			return
		}
	case Array:
		if n.Name == LastOf && n.Alias == Whole {
			c.stmt(n.Kid(0), fr)
			return
		}
	case Comp:
		s := &Scope{Parent: fr.scope, Func: fr.scope.Func, Class: fr.scope.Class, Names: map[string][]*Binding{}, File: c.f}
		inner := fr
		inner.scope = s
		i := 1
		for _, part := range n.Name {
			if part == 'i' {
				i++
				continue
			}
			c.bind(n.Kids[i], nil, "", "loop", inner)
			i += 2
		}
		for _, k := range n.Kids {
			c.expr(k, inner)
		}
		return
	}
	for _, k := range n.Kids {
		c.expr(k, fr)
	}
}

// relative notes files that Ruby and PHP load by a path from the file's own
// folder: require_relative "x", require __DIR__ . '/x.php'.
func (c *collector) relative(n *Node, fr frame) {
	if c.f.Lang != Ruby && c.f.Lang != PHP || !n.Is(Call) || !n.Kid(0).Is(Name) {
		return
	}
	arg := n.Kid(1)
	name := ""
	switch n.Kids[0].Name {
	case "autoload": // :Name, "path"
		if file := n.Kid(2); c.f.Lang == Ruby && file.Is(String) {
			name, arg = file.Name, file
		}
	case "require_relative", "load":
		if c.f.Lang == Ruby && arg.Is(String) {
			name = "./" + arg.Name
		}
	case "require", "require_once", "include", "include_once":
		if p, ok := besidePHP(arg); c.f.Lang == PHP && ok {
			name = p
		} else if c.f.Lang == PHP && arg.Is(String) && n.Kids[0].Name != "require" {
			name = "./" + arg.Name
		}
	}
	if name != "" {
		imp := &Node{Kind: Import, Name: name, Off: arg.Off, End: arg.End, Flag: Static}
		c.f.Imports = append(c.f.Imports, Site{Node: imp, Scope: fr.scope, Guards: fr.guards, InTry: fr.inTry})
	}
}

// besidePHP is a path that is made of the file's own folder: __DIR__ . "/x.php",
// dirname(__DIR__, 2) . "/x.php".
func besidePHP(n *Node) (string, bool) {
	switch {
	case n.Is(Name) && n.Name == "__DIR__":
		return ".", true
	case n.Is(Binary) && n.Kid(1).Is(String):
		p, ok := besidePHP(n.Kid(0))
		return p + n.Kids[1].Name, ok
	case n.Is(Call) && n.Kid(0).Is(Name) && n.Kids[0].Name == "dirname":
		if n.Kid(1).Is(Name) && n.Kids[1].Name == "__FILE__" {
			return ".", true
		}
		p, ok := besidePHP(n.Kid(1))
		up := 1
		if n.Kid(2).Is(Number) && len(n.Kids[2].Name) == 1 {
			up = int(n.Kids[2].Name[0] - '0')
		}
		for range up {
			if p = p + "/.."; p == "./.." {
				p = ".."
			}
		}
		return p, ok
	}
	return "", false
}

func (c *collector) assign(n *Node, fr frame) {
	target, value := n.Kid(0), n.Kid(1)
	if target == nil {
		return
	}
	switch target.Kind {
	case Name, Array, Object:
		scope := fr.scope
		if c.f.Lang != Python && target.Is(Name) { // assigns to the scope that declares it
			for s := scope; s != nil; s = s.Parent {
				if _, ok := s.Names[target.Name]; ok {
					scope = s
					break
				}
			}
		}
		sub := fr
		sub.scope = scope
		c.bindFrom(target, value, "", n.Name, sub, fr.scope)
	case Member, Index:
		c.f.Sets = append(c.f.Sets, Site{Node: target, Value: value, Op: n.Name, Scope: fr.scope, Guards: fr.guards, Turn: fr.turn})
		name := target.Name
		if target.Is(Index) {
			if !target.Kid(1).Is(String) {
				return
			}
			name = target.Kids[1].Name
		}
		switch target.Kid(0).Dotted() {
		case "module":
			if name == "exports" && c.f.Lang != Python {
				inner := value
				for inner.Is(Assign) {
					inner = inner.Kid(1)
				}
				c.f.Exports["="] = &Binding{Name: "=", Kind: "const", Value: inner, Off: n.Off}
			}
		case "module.exports", "exports":
			inner := value
			for inner.Is(Assign) {
				inner = inner.Kid(1)
			}
			c.f.Exports[name] = &Binding{Name: name, Kind: "const", Value: inner, Off: n.Off}
		}
	}
}
