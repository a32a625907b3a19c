package trace

import (
	"go/ast"
	"go/token"
	"strings"
)

// What stands under a condition that is not known, in Go: see aside.

// goAside is what code of Go does that may run or not.
type goAside struct {
	m     *machine
	s     *goScope
	sets  []ast.Expr
	own   map[string]bool
	ends  bool // it ends the program
	fails bool // it does what counts, or what is not understood
	loops int
	funcs int
}

func (m *machine) goEither(unknown error, x *ast.IfStmt, s *goScope) error {
	if !opens(unknown) {
		return unknown
	}
	a, b := m.goAside(s, 0, x.Body), m.goAside(s, 0, x.Else)
	switch {
	case a.ends && !b.ends && !b.fails:
		if x.Else == nil {
			return nil
		}
		return m.goStmt(x.Else, s, "")
	case b.ends && !a.ends && !a.fails:
		return m.goBlock(x.Body.List, s.inner())
	case a.fails || b.fails || a.ends || b.ends:
		return unknown
	}
	return m.goForget(append(a.sets, b.sets...), s, unknown)
}

// goPass goes on after what may have run any number of times.
func (m *machine) goPass(unknown error, s *goScope, nodes ...ast.Node) error {
	if !opens(unknown) {
		return unknown
	}
	x := m.goAside(s, 1, nodes...)
	if x.fails {
		return unknown
	}
	return m.goForget(x.sets, s, unknown)
}

// goForget sets what may have been set to what is not known.
func (m *machine) goForget(sets []ast.Expr, s *goScope, why error) error {
	for _, to := range sets {
		old, err := m.goEval(to, s)
		if err == nil {
			err = m.goStore(to, goValue{dontKnow(why.Error()), old.t}, s)
		}
		if err != nil {
			return why
		}
	}
	return nil
}

// goCalmed are the results of a function that could not be followed to its end,
// where it changes nothing but what is its own.
func (m *machine) goCalmed(f *goClosure, frame *goFrame, unknown error) ([]goValue, error) {
	if !opens(unknown) {
		return nil, unknown
	}
	x := &goAside{m: m, s: f.scope, own: map[string]bool{}, funcs: 1}
	x.params(f.decl)
	if f.recvOf != nil {
		for _, r := range f.recvOf.List {
			for _, n := range r.Names {
				x.own[n.Name] = true
			}
		}
	}
	x.node(f.body)
	if x.fails || x.ends || len(x.sets) > 0 || len(frame.deferred) > 0 {
		return nil, unknown
	}
	var out []goValue
	for _, t := range frame.types {
		if t.is(goInterface) && t.name == "error" {
			if out = append(out, goValue{nil, t}); frame.faulty { // it was giving one back
				out[len(out)-1].v = &goFault{msg: unknown.Error()}
			}
			continue
		}
		out = append(out, goValue{dontKnow(unknown.Error()), t})
	}
	return out, nil
}

func (m *machine) goAside(s *goScope, loops int, nodes ...ast.Node) *goAside {
	x := &goAside{m: m, s: s, own: map[string]bool{}, loops: loops}
	for _, n := range nodes {
		x.node(n)
	}
	return x
}

func (x *goAside) params(t *ast.FuncType) {
	for _, list := range []*ast.FieldList{t.Params, t.Results} {
		if list == nil {
			continue
		}
		for _, f := range list.List {
			for _, n := range f.Names {
				x.own[n.Name] = true
			}
		}
	}
}

func (x *goAside) branch(n ast.Node) bool {
	x.node(n)
	ends := x.ends
	x.ends = false
	return ends
}

func (x *goAside) node(n ast.Node) {
	if x.fails || x.ends {
		return
	}
	switch n := n.(type) {
	case nil, *ast.EmptyStmt:
	case *ast.BlockStmt:
		if n != nil {
			for _, k := range n.List {
				x.node(k)
			}
		}
	case *ast.ExprStmt:
		x.expr(n.X)
	case *ast.DeclStmt:
		d, ok := n.Decl.(*ast.GenDecl)
		if !ok {
			x.fails = true
			return
		}
		for _, spec := range d.Specs {
			if v, ok := spec.(*ast.ValueSpec); ok {
				for _, e := range v.Values {
					x.expr(e)
				}
				for _, name := range v.Names {
					x.own[name.Name] = true
				}
			}
		}
	case *ast.AssignStmt:
		for _, e := range n.Rhs {
			x.expr(e)
		}
		for _, e := range n.Lhs {
			if id, ok := e.(*ast.Ident); ok && n.Tok == token.DEFINE {
				x.own[id.Name] = true
				continue
			}
			x.target(e)
		}
	case *ast.IncDecStmt:
		x.target(n.X)
	case *ast.IfStmt:
		x.node(n.Init)
		x.expr(n.Cond)
		a, b := x.branch(n.Body), x.branch(n.Else)
		x.ends = a && b
	case *ast.ForStmt:
		x.loops++
		x.node(n.Init)
		x.expr(n.Cond)
		x.node(n.Post)
		x.branch(n.Body)
		x.loops--
	case *ast.RangeStmt:
		x.loops++
		x.expr(n.X)
		for _, e := range []ast.Expr{n.Key, n.Value} {
			if id, ok := e.(*ast.Ident); ok && n.Tok == token.DEFINE {
				x.own[id.Name] = true
			} else if e != nil {
				x.target(e)
			}
		}
		x.branch(n.Body)
		x.loops--
	case *ast.SwitchStmt:
		x.loops++
		x.node(n.Init)
		x.expr(n.Tag)
		x.cases(n.Body)
		x.loops--
	case *ast.BranchStmt:
		x.fails = x.loops == 0 || n.Label != nil || n.Tok == token.GOTO
	case *ast.ReturnStmt:
		for _, e := range n.Results {
			x.expr(e)
		}
		x.fails = x.fails || x.funcs == 0
	case *ast.DeferStmt:
		if len(n.Call.Args) > 0 || x.funcs == 0 {
			x.fails = true
		}
	default:
		x.fails = true
	}
}

func (x *goAside) cases(b *ast.BlockStmt) {
	for _, c := range b.List {
		clause, ok := c.(*ast.CaseClause)
		if !ok {
			x.fails = true
			return
		}
		for _, e := range clause.List {
			x.expr(e)
		}
		for _, k := range clause.Body {
			x.node(k)
		}
		x.ends = false
	}
}

func (x *goAside) target(e ast.Expr) {
	front := ast.Unparen(e)
	for {
		switch f := front.(type) {
		case *ast.SelectorExpr:
			front = ast.Unparen(f.X)
			continue
		case *ast.IndexExpr:
			x.expr(f.Index)
			front = ast.Unparen(f.X)
			continue
		}
		break
	}
	id, ok := front.(*ast.Ident)
	switch {
	case !ok:
		x.fails = true
	case id.Name == "_":
	case x.own[id.Name]:
		x.fails = x.fails || front != ast.Unparen(e) // it may be known elsewhere by another name
	default:
		x.sets = append(x.sets, e)
	}
}

func (x *goAside) expr(e ast.Expr) {
	if e == nil {
		return
	}
	ast.Inspect(e, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.FuncLit:
			return false
		case *ast.UnaryExpr:
			if _, made := n.X.(*ast.CompositeLit); n.Op == token.ARROW || n.Op == token.AND && !made {
				x.fails = true // what it points to may be set by another name
			}
		case *ast.CallExpr:
			x.call(n)
		}
		return !x.fails && !x.ends
	})
}

func (x *goAside) call(c *ast.CallExpr) {
	for _, a := range c.Args {
		if f, ok := a.(*ast.FuncLit); ok {
			ast.Inspect(f, func(n ast.Node) bool {
				if c, ok := n.(*ast.CallExpr); ok {
					if s, ok := c.Fun.(*ast.SelectorExpr); ok && goLoud[s.Sel.Name] {
						x.fails = true
					}
				}
				return true
			})
		}
	}
	fun := ast.Unparen(c.Fun)
	switch x := fun.(type) { // with types that are given
	case *ast.IndexExpr:
		fun = ast.Unparen(x.X)
	case *ast.IndexListExpr:
		fun = ast.Unparen(x.X)
	}
	switch f := fun.(type) {
	case *ast.Ident:
		switch {
		case f.Name == "panic":
			x.ends = true
		case f.Name == "copy" || f.Name == "delete" || f.Name == "clear" || f.Name == "close":
			x.fails = true
		case goBuiltins[f.Name]:
		case x.own[f.Name]:
			x.fails = true
		default:
			x.within(x.s.find(f.Name), f.Name)
		}
	case *ast.SelectorExpr:
		name := f.Sel.Name
		if id, ok := ast.Unparen(f.X).(*ast.Ident); ok && !x.own[id.Name] {
			if cell := x.s.find(id.Name); cell != nil {
				if o, ok := cell.v.v.(*opaque); ok && o.path != "" {
					if goEndings[o.path+"."+name] {
						x.ends = true
						return
					}
				}
			}
		}
		switch {
		case strings.HasPrefix(name, "Fatal") || strings.HasPrefix(name, "Panic"):
			x.ends = true
		case goLoud[name] || x.m.goDeclares(name):
			x.fails = true
		}
	case *ast.ArrayType, *ast.MapType, *ast.ParenExpr, *ast.InterfaceType:
	default:
		x.fails = true
	}
}

// within adds what a function of the tree does that is called by its name.
func (x *goAside) within(cell *goCell, name string) {
	if cell == nil { // a type, or not known
		x.fails = x.fails || x.m.goDeclares(name)
		return
	}
	f, ok := cell.v.v.(*goClosure)
	if !ok || f.body == nil || x.funcs > 3 {
		x.fails = true
		return
	}
	y := &goAside{m: x.m, s: f.scope, own: map[string]bool{}, funcs: x.funcs + 1}
	y.params(f.decl)
	y.node(f.body)
	x.fails = x.fails || y.fails || len(y.sets) > 0
	x.ends = x.ends || y.ends
}

// goDeclares reports whether a file that was read has a function or a method of a
// name.
func (m *machine) goDeclares(name string) bool {
	for _, p := range m.goPackages {
		if c := p.scope.vars[name]; c != nil {
			return true
		}
		for _, methods := range p.methods {
			if methods[name] != nil {
				return true
			}
		}
	}
	return false
}
