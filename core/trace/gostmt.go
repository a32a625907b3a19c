package trace

import (
	"go/ast"
	"go/token"
	"strings"

	"ubique/core/place"
)

// goLeave leaves a loop, a switch or a function.
type goLeave struct {
	tok   token.Token // BREAK, CONTINUE, RETURN, GOTO, FALLTHROUGH
	label string
}

func (*goLeave) Error() string { return "outside of what it leaves" }

func (m *machine) goBlock(list []ast.Stmt, s *goScope) error {
	for _, x := range list {
		if err := m.goStmt(x, s, ""); err != nil {
			return err
		}
	}
	return nil
}

func (m *machine) goStmt(x ast.Stmt, s *goScope, label string) error {
	err := m.goStatement(x, s, label)
	if _, stopped := err.(*stop); !stopped {
		return err
	}
	err = placed(err, func() place.Span { return s.file.f.At(s.file.spot(x).n) })
	return m.goStepOver(err, x, s)
}

// goStepOver goes on behind a statement that could not be followed, where it changes
// nothing but variables: these are not known from then on.
func (m *machine) goStepOver(unknown error, x ast.Stmt, s *goScope) error {
	if !opens(unknown) {
		return unknown
	}
	y := m.goAside(s, 0, x)
	if y.fails || y.ends {
		return unknown
	}
	var made []ast.Expr
	switch x := x.(type) {
	case *ast.AssignStmt:
		if x.Tok == token.DEFINE {
			made = x.Lhs
		}
	case *ast.DeclStmt:
		for _, spec := range x.Decl.(*ast.GenDecl).Specs {
			v, ok := spec.(*ast.ValueSpec)
			if !ok {
				return unknown
			}
			for _, n := range v.Names {
				made = append(made, n)
			}
		}
	}
	for _, e := range made {
		if id, ok := e.(*ast.Ident); ok && id.Name != "_" {
			s.declare(id.Name, goValue{dontKnow(unknown.Error()), nil}, nil)
		}
	}
	return m.goForget(y.sets, s, unknown)
}

func (m *machine) goStatement(x ast.Stmt, s *goScope, label string) error {
	if err := m.step(); err != nil {
		return err
	}
	if m.depth++; m.depth > maxDepth*10 {
		m.depth--
		return spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch x := x.(type) {
	case *ast.EmptyStmt:
		return nil
	case *ast.ExprStmt:
		if u, ok := ast.Unparen(x.X).(*ast.UnaryExpr); ok && u.Op == token.ARROW {
			_, err := m.goReceive(u, s)
			return err
		}
		if c, ok := ast.Unparen(x.X).(*ast.CallExpr); ok {
			_, err := m.goCallExpr(c, s)
			return err
		}
		_, err := m.goEval(x.X, s)
		return err
	case *ast.DeclStmt:
		if d, ok := x.Decl.(*ast.GenDecl); ok {
			_, err := m.goGeneral(d, s, false)
			return err
		}
	case *ast.AssignStmt:
		return m.goAssign(x, s)
	case *ast.IncDecStmt:
		v, err := m.goEval(x.X, s)
		if err != nil {
			return err
		}
		op := token.ADD
		if x.Tok == token.DEC {
			op = token.SUB
		}
		if v, err = m.goOperate(op, v, goValue{integer(1), tUntyped}, nil, s); err != nil {
			return err
		}
		return m.goStore(x.X, v, s)
	case *ast.BlockStmt:
		return m.goBlock(x.List, s.inner())
	case *ast.IfStmt:
		in := s.inner()
		if x.Init != nil {
			if err := m.goStmt(x.Init, in, ""); err != nil {
				return err
			}
		}
		v, err := m.goEval(x.Cond, in)
		if err != nil {
			return err
		}
		yes, err := m.goHolds(v, x.Cond)
		if err != nil {
			return m.goEither(err, x, in)
		}
		if yes {
			return m.goBlock(x.Body.List, in.inner())
		}
		if x.Else != nil {
			return m.goStmt(x.Else, in, "")
		}
		return nil
	case *ast.ForStmt:
		return m.goFor(x, s, label)
	case *ast.RangeStmt:
		return m.goRange(x, s, label)
	case *ast.SwitchStmt:
		return m.goSwitch(x, s, label)
	case *ast.TypeSwitchStmt:
		return m.goTypeSwitch(x, s, label)
	case *ast.SelectStmt:
		return m.goSelect(x, s, label)
	case *ast.LabeledStmt:
		return m.goStmt(x.Stmt, s, x.Label.Name)
	case *ast.BranchStmt:
		if x.Tok == token.GOTO {
			return giveUp("a goto")
		}
		l := &goLeave{tok: x.Tok}
		if x.Label != nil {
			l.label = x.Label.Name
		}
		return l
	case *ast.ReturnStmt:
		return m.goReturn(x, s)
	case *ast.SendStmt:
		c, err := m.goEval(x.Chan, s)
		if err != nil {
			return err
		}
		v, err := m.goEval(x.Value, s)
		if err != nil {
			return err
		}
		q, ok := c.v.(*goQueue)
		if !ok {
			if c.v == nil {
				return &exit{stays: true}
			}
			return nil
		}
		if u := c.t.under(); u != nil {
			if v, err = m.goFit(v, u.elem, s); err != nil {
				return err
			}
		}
		if q.q = append(q.q, goCopy(v)); len(q.q) > maxItems {
			return &exit{stays: true}
		}
		return nil
	case *ast.GoStmt:
		return m.goBeside(x.Call, s)
	case *ast.DeferStmt:
		if id, ok := ast.Unparen(x.Call.Fun).(*ast.Ident); ok && goBuiltins[id.Name] && s.find(id.Name) == nil {
			s.frame.deferred = append(s.frame.deferred, func() error {
				_, err := m.goLanguage(id.Name, x.Call, s)
				return err
			})
			return nil
		}
		fn, args, err := m.goCallee(x.Call, s)
		if err != nil {
			return err
		}
		s.frame.deferred = append(s.frame.deferred, func() error {
			_, err := m.goApply(fn, args, s.file.spot(x.Call), s)
			return err
		})
		return nil
	}
	return giveUp("code that is not followed")
}

// goBeside runs a function beside the others: that it stays where it is holds
// nothing up.
func (m *machine) goBeside(call *ast.CallExpr, s *goScope) error {
	fn, args, err := m.goCallee(call, s)
	if err != nil {
		return err
	}
	_, err = m.goApply(fn, args, s.file.spot(call), s)
	if x, ok := err.(*exit); ok && x.stays {
		m.stayed++
		return nil
	}
	return err
}

func (m *machine) goAssign(x *ast.AssignStmt, s *goScope) error {
	var values []goValue
	switch {
	case len(x.Lhs) > 1 && len(x.Rhs) == 1:
		list, err := m.goSeveral(x.Rhs[0], len(x.Lhs), s)
		if err != nil {
			return err
		}
		values = list[:len(x.Lhs):len(x.Lhs)]
		for i, to := range x.Lhs { // that it works is what is asked
			if o, ok := values[i].v.(*opaque); ok && i > 0 && isErrorName(to) && !o.certain() {
				values[i] = goValue{nil, nil}
			}
		}
	case x.Tok != token.ASSIGN && x.Tok != token.DEFINE: // +=
		op := goAssigning[x.Tok]
		v, err := m.goEval(x.Lhs[0], s)
		if err != nil {
			return err
		}
		w, err := m.goEval(x.Rhs[0], s)
		if err != nil {
			return err
		}
		if v, err = m.goOperate(op, v, w, nil, s); err != nil {
			return err
		}
		return m.goStore(x.Lhs[0], v, s)
	default:
		for _, e := range x.Rhs {
			v, err := m.goEval(e, s)
			if err != nil {
				return err
			}
			values = append(values, goCopy(v))
		}
	}
	if len(values) < len(x.Lhs) {
		return giveUp("several values")
	}
	for i, to := range x.Lhs {
		v := values[i]
		id, isName := to.(*ast.Ident)
		if isName && id.Name == "_" {
			continue
		}
		if x.Tok == token.DEFINE && isName && s.vars[id.Name] == nil {
			v, err := m.goFit(v, nil, s)
			if err != nil {
				return err
			}
			s.declare(id.Name, goCopy(v), declaredAs(v))
			continue
		}
		if err := m.goStore(to, v, s); err != nil {
			return err
		}
	}
	return nil
}

// certain reports whether something from outside is itself known: a package, a
// constant of one.
func (o *opaque) certain() bool { return o.path != "" && !strings.Contains(o.path, "()") }

var goAssigning = map[token.Token]token.Token{token.ADD_ASSIGN: token.ADD, token.SUB_ASSIGN: token.SUB, token.MUL_ASSIGN: token.MUL, token.QUO_ASSIGN: token.QUO, token.REM_ASSIGN: token.REM,
	token.AND_ASSIGN: token.AND, token.OR_ASSIGN: token.OR, token.XOR_ASSIGN: token.XOR, token.SHL_ASSIGN: token.SHL, token.SHR_ASSIGN: token.SHR, token.AND_NOT_ASSIGN: token.AND_NOT}

// goStore gives a value to what an expression names.
func (m *machine) goStore(to ast.Expr, v goValue, s *goScope) error {
	switch x := ast.Unparen(to).(type) {
	case *ast.IndexExpr:
		base, baseCell, err := m.goRef(x.X, s)
		if err != nil {
			return err
		}
		if p, ok := base.v.(*goCell); ok {
			base, baseCell = p.v, p
		}
		switch t := base.v.(type) {
		case *goTable:
			k, err := m.goEval(x.Index, s)
			if err != nil {
				return err
			}
			u := base.t.under()
			if u == nil {
				return undecided("a map that is not known")
			}
			if k, err = m.goFit(k, u.key, s); err != nil {
				return err
			}
			if v, err = m.goFit(v, u.elem, s); err != nil {
				return err
			}
			if !t.set(k, goCopy(v), u.elem) || len(t.keys) > maxItems {
				return undecided("an element that is not known is set")
			}
			return nil
		case string: // bytes
			if baseCell == nil || !base.t.is(goSlice) {
				return giveUp("an element of a text")
			}
			l := &goList{}
			for i := range len(t) {
				l.a = append(l.a, &goCell{v: goValue{integer(t[i]), tByte}, t: tByte})
			}
			baseCell.v = goValue{l, base.t}
		case nil:
			if base.t.is(goMap) {
				return &goPanic{goValue{&goFault{msg: "assignment to entry in nil map"}, tFault}, false}
			}
		case *opaque, *object:
			return nil
		}
	case *ast.SelectorExpr:
		base, _, err := m.goRef(x.X, s)
		if err != nil {
			return err
		}
		for {
			p, ok := base.v.(*goCell)
			if !ok {
				break
			}
			base = p.v
		}
		switch o := base.v.(type) {
		case *object:
			o.set(x.Sel.Name, m.goOld(v, 0))
			return nil
		case *opaque:
			if o.path != "" {
				if o.props == nil {
					o.props = newObject()
				}
				o.props.set(x.Sel.Name, m.goOld(v, 0))
			}
			return nil
		}
	}
	old, c, err := m.goRef(to, s)
	if err != nil {
		return err
	}
	if c == nil {
		switch o := old.v.(type) {
		case *opaque:
			if x, ok := ast.Unparen(to).(*ast.SelectorExpr); ok { // a field of what a structure embeds
				if o.self != nil {
					o.self.set(x.Sel.Name, m.goOld(v, 0))
				}
			}
			return nil
		}
		return giveUp("what is set")
	}
	t := c.t
	if t == nil && v.t != nil && v.t.kind == goUntyped && old.t != nil {
		t = old.t
	}
	if v, err = m.goFit(v, t, s); err != nil {
		return err
	}
	c.v = goCopy(v)
	return nil
}

func (m *machine) goReturn(x *ast.ReturnStmt, s *goScope) error {
	f := s.frame
	leave := &goLeave{tok: token.RETURN}
	if len(x.Results) == 0 {
		return leave
	}
	var values []goValue
	if len(x.Results) == 1 && len(f.types) > 1 {
		list, err := m.goSeveral(x.Results[0], len(f.types), s)
		if err != nil {
			return err
		}
		values = list
	} else {
		for i, e := range x.Results {
			var t *goType
			if i < len(f.types) {
				t = f.types[i]
			}
			v, err := m.goWant(e, t, s)
			if err != nil {
				if v, err = m.goResult(err, e, t, s); err != nil {
					for j, x := range x.Results {
						_, named := ast.Unparen(x).(*ast.Ident)
						f.faulty = f.faulty || !named && j < len(f.types) && f.types[j].is(goInterface) && f.types[j].name == "error"
					}
					return err
				}
			}
			if o, ok := v.v.(*opaque); ok && t.is(goInterface) && t.name == "error" { // one that was made to be given back
				name := o.path[strings.LastIndexByte(o.path, '.')+1:]
				wraps := goWraps[name] && len(o.args) > 0
				if wraps && o.args[0] == nil {
					v = goValue{nil, t}
				} else if wraps && known(o.args[0]) || goFaults[name] {
					v = goValue{&goFault{msg: "an error of " + o.path}, t}
				}
			}
			values = append(values, goCopy(v))
		}
	}
	if len(values) < len(f.results) {
		return giveUp("several results")
	}
	for i, c := range f.results {
		v, err := m.goFit(values[i], c.t, s)
		if err != nil {
			return err
		}
		c.v = v
	}
	return leave
}

// goResult is a result that could not be worked out, where nothing else hangs on it: an
// error that is made is one, whatever it says.
func (m *machine) goResult(unknown error, e ast.Expr, t *goType, s *goScope) (goValue, error) {
	if !opens(unknown) {
		return goValue{}, unknown
	}
	if x := m.goAside(s, 0, &ast.ExprStmt{X: e}); x.fails || x.ends {
		return goValue{}, unknown
	}
	if t.is(goInterface) && t.name == "error" {
		return goValue{&goFault{msg: unknown.Error()}, t}, nil
	}
	return goValue{dontKnow(unknown.Error()), t}, nil
}

// goTurn says what an error of a turn does to its loop: it goes on, it ends, or the
// error goes up.
func goTurn(err error, label string) (ends bool, up error) {
	l, ok := err.(*goLeave)
	if err == nil || ok && l.tok == token.CONTINUE && (l.label == "" || l.label == label) {
		return false, nil
	}
	if ok && l.tok == token.BREAK && (l.label == "" || l.label == label) {
		return true, nil
	}
	return true, err
}

func (m *machine) goFor(x *ast.ForStmt, s *goScope, label string) error {
	in := s.inner()
	if x.Init != nil {
		if err := m.goStmt(x.Init, in, ""); err != nil {
			return err
		}
	}
	for n := 0; ; n++ {
		if n > maxTurns && len(m.calls) > 0 {
			return &exit{stays: true}
		}
		if err := m.step(); err != nil {
			return err
		}
		if x.Cond != nil {
			v, err := m.goEval(x.Cond, in)
			if err != nil {
				return err
			}
			yes, err := m.goHolds(v, x.Cond)
			if err != nil {
				return m.goPass(err, in, x.Body, x.Post)
			}
			if !yes {
				return nil
			}
		}
		if ends, err := goTurn(m.goBlock(x.Body.List, in.inner()), label); ends {
			return err
		}
		next := in.inner() // each turn has variables of its own
		next.up = in.up
		for name, c := range in.vars {
			next.declare(name, c.v, c.t)
		}
		in = next
		if x.Post != nil {
			if err := m.goStmt(x.Post, in, ""); err != nil {
				return err
			}
		}
	}
}

func (m *machine) goRange(x *ast.RangeStmt, s *goScope, label string) error {
	over, err := m.goEval(x.X, s)
	if err != nil {
		return err
	}
	if p, ok := over.v.(*goCell); ok {
		over = p.v
	}
	turn := func(k, v goValue) (bool, error) {
		if err := m.step(); err != nil {
			return true, err
		}
		in := s.inner()
		for i, to := range []ast.Expr{x.Key, x.Value} {
			if to == nil {
				continue
			}
			w := k
			if i == 1 {
				w = goCopy(v)
			}
			if x.Tok == token.DEFINE {
				id, ok := to.(*ast.Ident)
				if !ok {
					return true, giveUp("a loop that is not understood")
				}
				w, err := m.goFit(w, nil, s)
				if err != nil {
					return true, err
				}
				in.declare(id.Name, w, declaredAs(w))
				continue
			}
			if id, ok := to.(*ast.Ident); ok && id.Name == "_" {
				continue
			}
			if err := m.goStore(to, w, s); err != nil {
				return true, err
			}
		}
		return goTurn(m.goBlock(x.Body.List, in.inner()), label)
	}
	switch c := over.v.(type) {
	case nil:
		if over.t.is(goFunc) || over.t == nil {
			return m.goPass(undecided("a loop over what is not known"), s, x)
		}
		if over.t.is(goChan) {
			return &exit{stays: true}
		}
		return nil
	case *goList:
		for i, e := range c.a[:len(c.a):len(c.a)] {
			if ends, err := turn(goValue{integer(i), tInt}, e.v); ends {
				return err
			}
		}
		return nil
	case *goRow:
		for i, e := range c.a {
			if ends, err := turn(goValue{integer(i), tInt}, e.v); ends {
				return err
			}
		}
		return nil
	case *goTable:
		for _, k := range append([]any(nil), c.keys...) {
			e := c.m[k]
			if e == nil {
				continue
			}
			if ends, err := turn(e.k, e.c.v); ends {
				return err
			}
		}
		return nil
	case string:
		if over.t.is(goSlice) {
			for i := range len(c) {
				if ends, err := turn(goValue{integer(i), tInt}, goValue{integer(c[i]), tByte}); ends {
					return err
				}
			}
			return nil
		}
		for i, r := range c {
			if ends, err := turn(goValue{integer(i), tInt}, goValue{integer(r), tRune}); ends {
				return err
			}
		}
		return nil
	case integer:
		for i := range c {
			if i > maxItems {
				return spent("a loop that is too long")
			}
			t := over.t
			if t == nil || t.kind == goUntyped {
				t = tInt
			}
			if ends, err := turn(goValue{i, t}, goValue{}); ends {
				return err
			}
		}
		return nil
	case *goSequence:
		for _, pair := range c.items {
			v := goValue{}
			if len(pair) > 1 {
				v = pair[1]
			}
			if ends, err := turn(pair[0], v); ends {
				return err
			}
		}
		return nil
	case *goQueue:
		for {
			if len(c.q) == 0 {
				if c.closed {
					return nil
				}
				return &exit{stays: true}
			}
			v := c.q[0]
			c.q = c.q[1:]
			if ends, err := turn(v, goValue{}); ends {
				return err
			}
		}
	case *opaque: // what a timer sends, which time that does not pass never does
		if strings.HasPrefix(c.path, "time.") {
			return &exit{stays: true}
		}
	case *goClosure: // a function that yields
		var up error
		ended := false
		yield := &goClosure{name: "yield", native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
			var k, v goValue
			if len(args) > 0 {
				k = args[0]
			}
			if len(args) > 1 {
				v = args[1]
			}
			ends, err := turn(k, v)
			if ends {
				ended, up = true, err
			}
			if _, ok := err.(*goLeave); !ok && err != nil {
				return nil, err
			}
			return []goValue{{!ends, tBool}}, nil
		}}
		_, err := m.goCall(c, []goValue{{yield, nil}}, s.file.spot(x))
		if ended && up != nil {
			return up
		}
		return err
	}
	return m.goPass(undecided("a loop over what is not known"), s, x)
}

func (m *machine) goSwitch(x *ast.SwitchStmt, s *goScope, label string) error {
	in := s.inner()
	if x.Init != nil {
		if err := m.goStmt(x.Init, in, ""); err != nil {
			return err
		}
	}
	subject := goValue{true, tUntyped}
	if x.Tag != nil {
		v, err := m.goEval(x.Tag, in)
		if err != nil {
			return err
		}
		if subject, err = m.goFit(v, nil, in); err != nil {
			return err
		}
	}
	which, other := -1, -1
	for i, c := range x.Body.List {
		clause, ok := c.(*ast.CaseClause)
		if !ok {
			continue
		}
		if clause.List == nil {
			other = i
			continue
		}
		for _, e := range clause.List {
			v, err := m.goEval(e, in)
			if err != nil {
				return err
			}
			if x.Tag == nil {
				yes, err := m.goHolds(v, e)
				if err != nil {
					return m.goPass(err, in, x)
				}
				if yes {
					which = i
					break
				}
				continue
			}
			same, ok := m.goSame(subject, v, nil)
			if !ok {
				return m.goPass(undecided("a case that is not known"), in, x)
			}
			if same {
				which = i
				break
			}
		}
		if which >= 0 {
			break
		}
	}
	if which < 0 {
		which = other
	}
	for ; which >= 0 && which < len(x.Body.List); which++ {
		err := m.goBlock(x.Body.List[which].(*ast.CaseClause).Body, in.inner())
		l, ok := err.(*goLeave)
		switch {
		case ok && l.tok == token.FALLTHROUGH:
			continue
		case ok && l.tok == token.BREAK && (l.label == "" || l.label == label):
			return nil
		}
		return err
	}
	return nil
}

func (m *machine) goTypeSwitch(x *ast.TypeSwitchStmt, s *goScope, label string) error {
	in := s.inner()
	if x.Init != nil {
		if err := m.goStmt(x.Init, in, ""); err != nil {
			return err
		}
	}
	name := ""
	var of ast.Expr
	switch a := x.Assign.(type) {
	case *ast.AssignStmt:
		if id, ok := a.Lhs[0].(*ast.Ident); ok {
			name = id.Name
		}
		of = a.Rhs[0]
	case *ast.ExprStmt:
		of = a.X
	}
	assert, ok := of.(*ast.TypeAssertExpr)
	if !ok {
		return giveUp("a switch of types")
	}
	v, err := m.goEval(assert.X, in)
	if err != nil {
		return err
	}
	var other *ast.CaseClause
	run := func(c *ast.CaseClause) error {
		body := in.inner()
		if name != "" {
			body.declare(name, v, nil)
		}
		err := m.goBlock(c.Body, body)
		if l, ok := err.(*goLeave); ok && l.tok == token.BREAK && (l.label == "" || l.label == label) {
			return nil
		}
		return err
	}
	for _, c := range x.Body.List {
		clause, ok := c.(*ast.CaseClause)
		if !ok {
			continue
		}
		if clause.List == nil {
			other = clause
			continue
		}
		for _, e := range clause.List {
			if id, ok := e.(*ast.Ident); ok && id.Name == "nil" {
				if v.v == nil && v.t == nil {
					return run(clause)
				}
				continue
			}
			t, err := m.goTypeOf(e, in)
			if err != nil {
				return err
			}
			is, ok := m.goIs(v, t)
			if !ok {
				return giveUp("what type something is of")
			}
			if is {
				return run(clause)
			}
		}
	}
	if other != nil {
		return run(other)
	}
	return nil
}

// goSelect takes the first way that is open; where none is, the program waits.
func (m *machine) goSelect(x *ast.SelectStmt, s *goScope, label string) error {
	var other *ast.CommClause
	run := func(c *ast.CommClause, in *goScope) error {
		err := m.goBlock(c.Body, in)
		if l, ok := err.(*goLeave); ok && l.tok == token.BREAK && (l.label == "" || l.label == label) {
			return nil
		}
		return err
	}
	for _, k := range x.Body.List {
		c, ok := k.(*ast.CommClause)
		if !ok {
			continue
		}
		if c.Comm == nil {
			other = c
			continue
		}
		in := s.inner()
		var from ast.Expr
		switch y := c.Comm.(type) {
		case *ast.ExprStmt:
			from = y.X
		case *ast.AssignStmt:
			from = y.Rhs[0]
		case *ast.SendStmt:
			v, err := m.goEval(y.Chan, in)
			if err != nil {
				return err
			}
			if q, ok := v.v.(*goQueue); ok && !q.closed {
				if err := m.goStmt(y, in, ""); err != nil {
					return err
				}
				return run(c, in)
			}
			continue
		}
		u, ok := ast.Unparen(from).(*ast.UnaryExpr)
		if !ok {
			continue
		}
		v, err := m.goEval(u.X, in)
		if err != nil {
			return err
		}
		if q, ok := v.v.(*goQueue); !ok || len(q.q) == 0 && !q.closed {
			continue
		}
		if err := m.goStmt(c.Comm, in, ""); err != nil {
			return err
		}
		return run(c, in)
	}
	if other != nil {
		return run(other, s.inner())
	}
	return &exit{stays: true}
}
