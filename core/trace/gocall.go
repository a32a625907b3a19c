package trace

import (
	"go/ast"
	"go/token"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"ubique/core/source"
)

// runGo loads the package of a file and runs its main.
func (m *machine) runGo(file string) error {
	p, err := m.goLoad(source.Dir(file))
	if err != nil {
		return m.goFailed(err)
	}
	c := p.scope.vars["main"]
	if c == nil {
		return giveUp("there is no main")
	}
	f, ok := c.v.v.(*goClosure)
	if !ok {
		return giveUp("there is no main")
	}
	_, err = m.goCall(f, nil, f.scope.file.spot(f.node))
	if err == nil && len(m.calls) > 0 && m.stayed > 0 && !m.waiting && !m.beyond {
		return &thrown{"main comes to its end while others still run"}
	}
	return m.goFailed(err)
}

// goFailed says what an error of a program comes to.
func (m *machine) goFailed(err error) error {
	switch err := err.(type) {
	case *goPanic:
		if err.slip {
			return raise("IndexError", goPlain(err.v))
		}
		return &thrown{"panic: " + goPlain(err.v)}
	case *goLeave:
		return giveUp("%s", err.Error())
	}
	return err
}

// goCallee is what a call calls, and what it is given.
func (m *machine) goCallee(e *ast.CallExpr, s *goScope) (goValue, []goValue, error) {
	fn, err := m.goEval(e.Fun, s)
	if err != nil {
		return fn, nil, err
	}
	args, err := m.goArguments(e, fn, s)
	return fn, args, err
}

func (m *machine) goArguments(e *ast.CallExpr, fn goValue, s *goScope) (args []goValue, err error) {
	if len(e.Args) == 1 {
		if c, ok := ast.Unparen(e.Args[0]).(*ast.CallExpr); ok && !e.Ellipsis.IsValid() { // f(g())
			list, err := m.goCallExpr(c, s)
			if err != nil {
				return nil, err
			}
			if len(list) == 0 {
				list = []goValue{{nil, nil}}
			}
			for i := range list {
				list[i] = goCopy(list[i])
			}
			return list, nil
		}
	}
	for i, a := range e.Args {
		v, err := m.goEval(a, s)
		if err != nil {
			return nil, err
		}
		if i == len(e.Args)-1 && e.Ellipsis.IsValid() {
			switch l := v.v.(type) {
			case *goList:
				for _, c := range l.a {
					args = append(args, c.v)
				}
				continue
			case nil:
				continue
			case string: // append([]byte, text...)
				for i := range len(l) {
					args = append(args, goValue{integer(l[i]), tByte})
				}
				continue
			}
			return nil, undecided("arguments that are not known")
		}
		args = append(args, goCopy(v))
	}
	return args, nil
}

// goCallExpr runs a call, a conversion or a built-in function.
func (m *machine) goCallExpr(e *ast.CallExpr, s *goScope) ([]goValue, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	at := s.file.spot(e)
	switch ast.Unparen(e.Fun).(type) {
	case *ast.ArrayType, *ast.MapType, *ast.FuncType, *ast.InterfaceType, *ast.ChanType:
		t, err := m.goTypeOf(e.Fun, s)
		if err != nil {
			return nil, err
		}
		return m.goConvert(t, e, s)
	}
	fn, err := m.goEval(e.Fun, s)
	if err != nil {
		return nil, err
	}
	switch f := fn.v.(type) {
	case *goTypeValue:
		return m.goConvert(f.t, e, s)
	case *opaque:
		if goBuiltins[f.path] {
			return m.goLanguage(f.path, e, s)
		}
		if x, ok := outsideConversion(f.path); ok && len(e.Args) == 1 {
			return m.goConvert(x, e, s)
		}
	}
	args, err := m.goArguments(e, fn, s)
	if err != nil {
		return nil, err
	}
	return m.goApply(fn, args, at, s)
}

// outsideConversion is a type of the library of which a call converts.
func outsideConversion(p string) (*goType, bool) {
	switch p {
	case "time.Duration", "net/http.HandlerFunc", "encoding/json.RawMessage", "reflect.Kind", "os.FileMode", "io/fs.FileMode", "syscall.Signal", "log/slog.Level":
		return outsideType(p), true
	}
	return nil, false
}

func (m *machine) goConvert(t *goType, e *ast.CallExpr, s *goScope) ([]goValue, error) {
	if len(e.Args) != 1 {
		return nil, giveUp("a conversion")
	}
	v, err := m.goEval(e.Args[0], s)
	if err != nil {
		return nil, err
	}
	v, err = m.goConverted(v, t, s)
	return []goValue{v}, err
}

func (m *machine) goConverted(v goValue, t *goType, s *goScope) (goValue, error) {
	u := t.under()
	if o, ok := v.v.(*opaque); ok {
		return goValue{o, t}, nil
	}
	switch u.kind {
	case goInt:
		switch x := v.v.(type) {
		case integer:
			return goValue{wrapped(x, t), t}, nil
		case float64:
			return goValue{wrapped(integer(x), t), t}, nil
		}
	case goFloat:
		if f, ok := toNumber(v.v); ok {
			return goValue{f, t}, nil
		}
	case goString:
		switch x := v.v.(type) {
		case integer:
			return goValue{string(rune(x)), t}, nil
		case string:
			return goValue{x, t}, nil
		case *content:
			return goValue{x, t}, nil
		case *goList:
			var b strings.Builder
			for _, c := range x.a {
				n, ok := c.v.v.(integer)
				if !ok {
					return goValue{dontKnow("a text of bytes that are not known"), t}, nil
				}
				if c.v.t.same(tRune) {
					b.WriteRune(rune(n))
				} else {
					b.WriteByte(byte(n))
				}
			}
			return goValue{b.String(), t}, nil
		case nil:
			return goValue{"", t}, nil
		}
	case goSlice:
		if x, ok := v.v.(string); ok && u.elem.same(tRune) {
			l := &goList{}
			for _, r := range x {
				l.a = append(l.a, &goCell{v: goValue{integer(r), tRune}, t: tRune})
			}
			return goValue{l, t}, m.use(len(x))
		}
		return goValue{v.v, t}, nil
	case goInterface:
		if v.t == nil || v.t.kind == goUntyped {
			return m.goFit(v, t, s)
		}
		return v, nil
	case goParam:
		return v, nil
	}
	return goValue{v.v, t}, nil
}

// goApply calls a value.
func (m *machine) goApply(fn goValue, args []goValue, at spot, s *goScope) ([]goValue, error) {
	switch f := fn.v.(type) {
	case *goClosure:
		return m.goCall(f, args, at)
	case *opaque:
		return m.goOutsideCall(f, args, at, s)
	case *function: // one of the rest of the package
		v, err := m.call(f, undefined, m.goOlds(args), nil, at)
		return []goValue{m.goFrom(v)}, err
	case nil:
		return nil, slip("invalid memory address or nil pointer dereference")
	}
	return nil, giveUp("what is called is no function")
}

// goCall runs a function of the tree.
func (m *machine) goCall(f *goClosure, args []goValue, at spot) (out []goValue, err error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if f.native != nil {
		return f.native(m, args, at)
	}
	if m.frames++; m.frames > maxDepth {
		m.frames--
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.frames-- }()
	if f.body == nil {
		return nil, giveUp("a function without a body")
	}
	frame := &goFrame{fn: f, static: f.scope.file.static(f.node)}
	s := &goScope{up: f.scope, file: f.scope.file, frame: frame}
	if f.recvOf != nil && len(f.recvOf.List) > 0 {
		if f.home != nil { // the types that its own was made with
			var names []ast.Expr
			switch x := ast.Unparen(starless(f.recvOf.List[0].Type)).(type) {
			case *ast.IndexExpr:
				names = []ast.Expr{x.Index}
			case *ast.IndexListExpr:
				names = x.Indices
			}
			for i, n := range names {
				if id, ok := n.(*ast.Ident); ok {
					t := &goType{kind: goParam, name: id.Name}
					if i < len(f.home.params) {
						t = f.home.params[i]
					}
					s.typed(id.Name, t)
				}
			}
		}
		if f.recv == nil {
			return nil, giveUp("a method without what it belongs to")
		}
		for _, n := range f.recvOf.List[0].Names {
			s.declare(n.Name, goCopy(*f.recv), nil)
		}
	}
	if f.decl.TypeParams != nil {
		m.goInfer(f, args, s)
	}
	i := 0
	if f.decl.Params != nil {
		for _, p := range f.decl.Params.List {
			pt, err := m.goTypeOf(p.Type, s)
			if err != nil {
				return nil, err
			}
			if _, rest := p.Type.(*ast.Ellipsis); rest {
				l := &goList{}
				for ; i < len(args); i++ {
					v, err := m.goFit(args[i], pt.elem, s)
					if err != nil {
						return nil, err
					}
					l.a = append(l.a, &goCell{v: v, t: pt.elem})
				}
				for _, n := range p.Names {
					v := goValue{l, pt}
					if len(l.a) == 0 {
						v.v = nil
					}
					s.declare(n.Name, v, pt)
				}
				continue
			}
			for j := range max(1, len(p.Names)) {
				if i >= len(args) {
					return nil, giveUp("arguments that are missing")
				}
				v, err := m.goFit(args[i], pt, s)
				if err != nil {
					return nil, err
				}
				if len(p.Names) > 0 {
					s.declare(p.Names[j].Name, v, pt)
				}
				i++
			}
		}
	}
	if f.decl.Results != nil {
		for _, r := range f.decl.Results.List {
			t, err := m.goTypeOf(r.Type, s)
			if err != nil {
				return nil, err
			}
			for j := range max(1, len(r.Names)) {
				z, err := m.goZero(t, s)
				if err != nil {
					return nil, err
				}
				c := &goCell{v: z, t: t}
				if len(r.Names) > 0 {
					c = s.declare(r.Names[j].Name, z, t)
				}
				frame.results = append(frame.results, c)
				frame.types = append(frame.types, t)
			}
		}
	}
	err = m.goBlock(f.body.List, s.inner())
	if l, ok := err.(*goLeave); ok && l.tok == token.RETURN {
		err = nil
	}
	for len(frame.deferred) > 0 {
		next := frame.deferred[len(frame.deferred)-1]
		frame.deferred = frame.deferred[:len(frame.deferred)-1]
		p, panics := err.(*goPanic)
		if err != nil && !panics {
			return nil, err // it has ended, or is not followed
		}
		outer := m.panicking
		m.panicking = p
		e := next()
		recovered := panics && m.panicking == nil
		m.panicking = outer
		if recovered {
			err = nil
		}
		if e != nil {
			err = e
		}
	}
	if err != nil {
		return m.goCalmed(f, frame, err)
	}
	for _, c := range frame.results {
		out = append(out, c.v)
	}
	return out, nil
}

func starless(e ast.Expr) ast.Expr {
	if x, ok := e.(*ast.StarExpr); ok {
		return x.X
	}
	return e
}

// goInfer finds the types that a function is called with.
func (m *machine) goInfer(f *goClosure, args []goValue, s *goScope) {
	open := map[string]bool{}
	for _, p := range f.decl.TypeParams.List {
		for _, n := range p.Names {
			known := false
			for x := f.scope; x != nil && x.file == f.scope.file; x = x.up {
				if t := x.types[n.Name]; t != nil && t.kind != goParam {
					known = true
				}
			}
			if !known {
				open[n.Name] = true
				s.typed(n.Name, &goType{kind: goParam, name: n.Name})
			}
		}
	}
	var unify func(e ast.Expr, t *goType)
	unify = func(e ast.Expr, t *goType) {
		if t == nil {
			return
		}
		switch e := e.(type) {
		case *ast.Ident:
			if open[e.Name] && t.kind != goUntyped {
				s.types[e.Name] = t
				delete(open, e.Name)
			}
		case *ast.StarExpr:
			unify(e.X, t.elem)
		case *ast.ArrayType:
			unify(e.Elt, t.under().elem)
		case *ast.Ellipsis:
			unify(e.Elt, t)
		case *ast.MapType:
			unify(e.Key, t.under().key)
			unify(e.Value, t.under().elem)
		case *ast.IndexExpr:
			if len(t.params) > 0 {
				unify(e.Index, t.params[0])
			}
		case *ast.IndexListExpr:
			for i, x := range e.Indices {
				if i < len(t.params) {
					unify(x, t.params[i])
				}
			}
		}
	}
	result := func(e ast.Expr, fn *ast.FuncType, in *goScope) { // what a function gives
		w, ok := e.(*ast.FuncType)
		if !ok || w.Results == nil || fn == nil || fn.Results == nil {
			return
		}
		for i, r := range w.Results.List {
			if i < len(fn.Results.List) {
				if t, err := m.goTypeOf(fn.Results.List[i].Type, in); err == nil {
					unify(r.Type, t)
				}
			}
		}
	}
	for _, untyped := range []bool{false, true} {
		i := 0
		for _, p := range f.decl.Params.List {
			for range max(1, len(p.Names)) {
				_, rest := p.Type.(*ast.Ellipsis)
				for i < len(args) {
					v := args[i]
					i++
					if untyped && v.t != nil && v.t.kind == goUntyped {
						if w, err := m.goFit(v, nil, s); err == nil {
							v = w
						}
					}
					if c, ok := v.v.(*goClosure); ok {
						result(p.Type, c.decl, c.scope)
					} else if o, ok := v.v.(*opaque); ok {
						if t := goGives[o.path]; t != nil {
							if w, ok := p.Type.(*ast.FuncType); ok && w.Results != nil && len(w.Results.List) > 0 {
								unify(w.Results.List[0].Type, t)
							}
						}
					}
					unify(p.Type, v.t)
					if !rest {
						break
					}
				}
			}
		}
	}
}

// goGives are the types of what functions of the library give first.
var goGives = map[string]*goType{"strconv.Atoi": tInt, "strconv.ParseBool": tBool, "time.ParseDuration": tLength, "strings.TrimSpace": tString, "strings.ToLower": tString, "strings.ToUpper": tString, "strconv.Itoa": tString}

// goLanguage runs a built-in function.
func (m *machine) goLanguage(name string, e *ast.CallExpr, s *goScope) ([]goValue, error) {
	one := func(v any, t *goType) ([]goValue, error) { return []goValue{{v, t}}, nil }
	if name == "make" || name == "new" {
		if len(e.Args) == 0 {
			return nil, giveUp("what is made")
		}
		t, err := m.goTypeOf(e.Args[0], s)
		if err != nil {
			return nil, err
		}
		if name == "new" {
			z, err := m.goZero(t, s)
			if err != nil {
				return nil, err
			}
			if o, ok := z.v.(*object); ok {
				return one(o, pointerTo(t))
			}
			return one(&goCell{v: z, t: t}, pointerTo(t))
		}
		switch u := t.under(); u.kind {
		case goMap:
			return one(newTable(), t)
		case goChan:
			return one(&goQueue{}, t)
		case goSlice:
			size := 0
			if len(e.Args) > 1 {
				v, err := m.goEval(e.Args[1], s)
				if err != nil {
					return nil, err
				}
				n, ok := v.v.(integer)
				if !ok || n < 0 || n > maxItems {
					return nil, undecided("a list of a size that is not known")
				}
				size = int(n)
			}
			l := &goList{}
			for range size {
				z, err := m.goZero(u.elem, s)
				if err != nil {
					return nil, err
				}
				l.a = append(l.a, &goCell{v: z, t: u.elem})
			}
			return one(l, t)
		}
		return nil, giveUp("what is made")
	}
	var args []goValue
	for i, a := range e.Args {
		v, err := m.goEval(a, s)
		if err != nil {
			return nil, err
		}
		if name == "append" && i > 0 {
			v = goCopy(v)
		}
		args = append(args, v)
	}
	arg := func(i int) goValue {
		if i < len(args) {
			return args[i]
		}
		return goValue{}
	}
	switch name {
	case "len", "cap":
		v := arg(0)
		if p, ok := v.v.(*goCell); ok {
			v = p.v
		}
		switch x := v.v.(type) {
		case nil:
			return one(integer(0), tInt)
		case string:
			return one(integer(len(x)), tInt)
		case *content:
			return one(integer(len(x.text)), tInt)
		case *goList:
			if name == "cap" {
				return one(integer(cap(x.a)), tInt)
			}
			return one(integer(len(x.a)), tInt)
		case *goRow:
			return one(integer(len(x.a)), tInt)
		case *goTable:
			return one(integer(len(x.keys)), tInt)
		case *goQueue:
			return one(integer(len(x.q)), tInt)
		}
		return one(dontKnow("a length"), tInt)
	case "append":
		l, ok := arg(0).v.(*goList)
		t := arg(0).t
		switch x := arg(0).v.(type) {
		case nil:
			l, ok = &goList{}, true
		case string:
			l, ok = &goList{}, t.is(goSlice)
			for i := range len(x) {
				l.a = append(l.a, &goCell{v: goValue{integer(x[i]), tByte}, t: tByte})
			}
		}
		if !ok {
			if o, isOpaque := arg(0).v.(*opaque); isOpaque {
				return []goValue{{dontKnow("what is made of " + o.String()), nil}}, nil
			}
			return nil, undecided("a list that is not known")
		}
		var elem *goType
		if u := t.under(); u != nil {
			elem = u.elem
		}
		more := args[min(1, len(args)):]
		if e.Ellipsis.IsValid() && len(args) > 1 {
			more = nil
			switch x := args[len(args)-1].v.(type) {
			case *goList:
				for _, c := range x.a {
					more = append(more, goCopy(c.v))
				}
			case string:
				for i := range len(x) {
					more = append(more, goValue{integer(x[i]), tByte})
				}
			case nil:
			default:
				return nil, undecided("a list that is not known")
			}
		}
		a := l.a
		for _, v := range more {
			v, err := m.goFit(v, elem, s)
			if err != nil {
				return nil, err
			}
			a = append(a, &goCell{v: v, t: elem})
		}
		if len(a) > maxItems {
			return nil, spent("a list that is too long")
		}
		if t == nil {
			t = &goType{kind: goSlice, elem: elem}
		}
		return []goValue{{&goList{a}, t}}, m.use(len(a) - len(l.a) + 1)
	case "copy":
		to, ok1 := arg(0).v.(*goList)
		from, ok2 := arg(1).v.(*goList)
		if !ok1 || !ok2 {
			return one(integer(0), tInt)
		}
		n := min(len(to.a), len(from.a))
		for i := range n {
			to.a[i].v = goCopy(from.a[i].v)
		}
		return one(integer(n), tInt)
	case "delete":
		if t, ok := arg(0).v.(*goTable); ok {
			if !known(arg(1).v) && len(t.keys) > 0 {
				return nil, undecided("a key that is not known")
			}
			t.remove(arg(1))
		}
		return nil, nil
	case "clear":
		switch x := arg(0).v.(type) {
		case *goTable:
			x.keys, x.m = nil, map[any]*goEntry{}
		case *goList:
			for _, c := range x.a {
				z, err := m.goZero(c.t, s)
				if err != nil {
					return nil, err
				}
				c.v = z
			}
		}
		return nil, nil
	case "min", "max":
		best := arg(0)
		for _, x := range args[min(1, len(args)):] {
			less, err := m.goOperate(token.LSS, x, best, nil, s)
			if err != nil {
				return nil, err
			}
			yes, ok := less.v.(bool)
			if !ok {
				return one(dontKnow("the most of what is not known"), best.t)
			}
			t := best.t
			if t == nil || t.kind == goUntyped {
				t = x.t
			}
			if same, _ := m.goSame(x, best, nil); yes == (name == "min") && !same {
				best = x
			}
			best.t = t
		}
		return []goValue{best}, nil
	case "panic":
		v, err := m.goFit(arg(0), nil, s)
		if err != nil {
			return nil, err
		}
		return nil, &goPanic{v: v}
	case "recover":
		p := m.panicking
		if p == nil {
			return one(nil, nil)
		}
		m.panicking = nil
		return []goValue{p.v}, nil
	case "close":
		if q, ok := arg(0).v.(*goQueue); ok {
			q.closed = true
		}
		return nil, nil
	case "print", "println":
		return nil, nil
	}
	return nil, giveUp("what %s does", name)
}

// goOutsideCall calls something outside of the tree.
func (m *machine) goOutsideCall(f *opaque, args []goValue, at spot, s *goScope) ([]goValue, error) {
	for i, v := range args {
		w, err := m.goFit(v, nil, s)
		if err != nil {
			return nil, err
		}
		args[i] = w
	}
	if n, ok := goCertificates[f.path[strings.LastIndexByte(f.path, '.')+1:]]; ok { // it reads them before anything else
		for _, v := range args {
			if name, isText := v.v.(string); isText && m.lacks(name) {
				results := []goValue{{dontKnow("a certificate"), nil}, {&goFault{msg: "open " + name + ": no such file or directory", causes: []goValue{{m.package1("os.ErrNotExist"), nil}}, path: "io/fs.PathError"}, tFault}}
				return results[2-n:], nil
			}
		}
	}
	if list, done, err := m.goStdFlag(f, args, at, s); done || err != nil {
		return list, err
	}
	if list, done, err := m.goLibrary(f, args, at, s); done || err != nil {
		return list, err
	}
	if list, done, err := m.goFlagsMethod(f, args, at, s); done || err != nil {
		return list, err
	}
	if list, done, err := m.goViper(f, args, at, s); done || err != nil {
		return list, err
	}
	if list, done, err := m.goEnvs(f, args, at, s); done || err != nil {
		return list, err
	}
	if list, done, err := m.goSettings(f, args, at, s); done || err != nil {
		return list, err
	}
	if strings.HasSuffix(f.path, "Flags().Changed") && len(args) == 1 {
		if name, ok := args[0].v.(string); ok {
			return []goValue{m.goGiven(name)}, nil
		}
	}
	if m.goVariable(f, args, at) {
		return nil, nil
	}
	olds := m.goOlds(args)
	if list, done, err := m.goLaunches(f, olds, at); done || err != nil {
		return list, err
	}
	if f.self != nil && f.self.class != nil {
		if v, done, err := m.goMethod(f.self, f.path[strings.LastIndexByte(f.path, '.')+1:], olds, nil, at); done || err != nil {
			return m.goResults(v), err
		}
	} else if f.recv != nil {
		if v, done, err := m.goMethod(f.recv, f.path[strings.LastIndexByte(f.path, '.')+1:], olds, nil, at); done || err != nil {
			return m.goResults(v), err
		}
	}
	if v, done, err := m.goBuiltin(f, olds, at); done || err != nil {
		if kind, ok := goFlagKind(f.path); ok {
			c, t := &goCell{v: goValue{v, nil}}, (*goType)(nil)
			if _, ok := v.(*opaque); !ok {
				c.v = m.goFrom(v)
				c.t, t = c.v.t, pointerTo(c.v.t)
			}
			m.goDefines(f.path, kind, olds, c)
			return []goValue{{c, t}}, err
		}
		return m.goResults(v), err
	}
	if name := f.path[strings.LastIndexByte(f.path, '.')+1:]; goFills(name) && !strings.HasPrefix(f.path, "fmt.") && !strings.HasPrefix(f.path, "log") {
		for _, v := range args {
			if c, ok := v.v.(*goCell); ok {
				if _, isRecord := c.v.v.(*goRecord); isRecord {
					return nil, giveUp("what %s puts into a variable", f.path)
				}
			}
		}
	}
	v, err := m.outsideCall(f, olds, nil, at)
	if err != nil {
		return nil, err
	}
	m.beyond = m.beyond || m.stayed > 0 // it may wait for the others
	return []goValue{m.goFrom(m.goAsk(v, at, s))}, nil
}

// goFills reports whether a function of a name most likely puts something into what
// it is given a pointer to.
func goFills(name string) bool {
	for _, w := range []string{"Unmarshal", "Decode", "Parse", "Process", "Load", "Read", "Bind", "Scan", "Populate", "Fill", "Get", "Var", "Copy", "Merge", "Set"} {
		if strings.Contains(name, w) {
			return true
		}
	}
	return false
}

// goDefines notes the flag that a call of flag or pflag defines.
func (m *machine) goDefines(path, kind string, args []any, c *goCell) {
	name, ok := first(args).(string)
	if !ok {
		return
	}
	at := 1
	if strings.HasSuffix(kind, "P") {
		at = 2
	}
	usage := ""
	if len(args) > at+1 {
		usage, _ = args[at+1].(string)
	}
	if len(args) > at {
		in := strings.TrimSuffix(path[:strings.LastIndexByte(path, '.')], ".CommandLine")
		m.goDefined(in, name, kind, usage, args[at], c, goValue{})
		if short, ok := args[1].(string); ok && at == 2 && short != "" {
			x := m.goFlagOf(in, name)
			for _, w := range m.argv()[1:] {
				t, _ := w.(string)
				x.given = x.given || strings.HasPrefix(t, "-"+short)
			}
		}
	}
}

// goGiven says whether the command line gives a flag of pflag; one letter may stand
// for it too.
func (m *machine) goGiven(name string) goValue {
	letters := false
	for _, a := range m.argv()[1:] {
		w, ok := a.(string)
		if !ok {
			return goValue{dontKnow("an argument"), tBool}
		}
		word, _, _ := strings.Cut(w, "=")
		if word == "--"+name {
			return goValue{true, tBool}
		}
		letters = letters || len(w) > 1 && w[0] == '-' && w[1] != '-'
	}
	if letters {
		return goValue{dontKnow("whether a letter stands for " + name), tBool}
	}
	return goValue{false, tBool}
}

// goVariable defines a flag that is kept in a variable: flag.StringVar(&x, …).
func (m *machine) goVariable(f *opaque, args []goValue, at spot) bool {
	i := strings.LastIndexByte(f.path, '.')
	name := f.path[i+1:]
	short := strings.HasSuffix(name, "VarP")
	if i < 0 || !strings.HasSuffix(name, "Var") && !short || len(args) < 3 {
		return false
	}
	c, ok := args[0].v.(*goCell)
	if !ok {
		return false
	}
	kind := strings.TrimSuffix(strings.TrimSuffix(name, "P"), "Var")
	if short {
		kind += "P"
	}
	if _, ok := goFlagKind(f.path[:i+1] + kind); !ok {
		c.v = goValue{dontKnow("what a flag is set to"), c.t}
		return true
	}
	v, done, err := m.goBuiltin(&opaque{path: f.path[:i+1] + kind, recv: f.recv}, m.goOlds(args[1:]), at)
	if err != nil || !done {
		c.v = goValue{dontKnow("what a flag is set to"), c.t}
		return true
	}
	w := m.goFrom(v)
	if w.t == nil || c.t != nil && w.v != nil {
		w.t = c.t
	}
	c.v = w
	m.goDefines(f.path, kind, m.goOlds(args[1:]), c)
	return true
}

// goOld is a value as the rest of the package knows it.
func (m *machine) goOld(v goValue, depth int) any {
	if depth > 12 {
		return dontKnow("nested too deep")
	}
	if depth == 0 {
		m.olds = 0
	}
	if m.olds++; m.olds > 20_000 || m.use(1) != nil {
		return dontKnow("too much")
	}
	switch x := v.v.(type) {
	case nil, bool, integer, float64, string, *opaque, *object, *content:
		return x
	case *goCell:
		return m.goOld(x.v, depth+1)
	case *goList:
		return m.goOldList(x.a, depth)
	case *goRow:
		return m.goOldList(x.a, depth)
	case *goTable:
		o := newObject()
		o.dict = true
		for _, k := range x.keys {
			o.set(show(k), m.goOld(x.m[k].c.v, depth+1))
		}
		return o
	case *goRecord:
		o := newObject()
		o.class = &class{name: v.t.String(), builtin: true, statics: newObject(), methods: newObject()}
		if u := v.t.under(); u != nil && len(u.fields) == len(x.fields) {
			for i, f := range u.fields {
				o.set(f.name, m.goOld(x.fields[i].v, depth+1))
			}
		}
		return o
	case *goClosure:
		return &function{name: x.name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			var list []goValue
			for _, a := range args {
				if a == any(undefined) {
					a = nil
				}
				list = append(list, m.goFrom(a))
			}
			if x.decl != nil && x.decl.Params != nil { // what it is not given is not known
				for n := x.decl.Params.NumFields(); len(list) < n; {
					list = append(list, goValue{dontKnow("what is handed to a function"), nil})
				}
			}
			out, err := m.goCall(x, list, at)
			if p, ok := err.(*goPanic); ok {
				return nil, m.goFailed(p)
			}
			if err != nil || len(out) == 0 {
				return nil, err
			}
			return m.goOld(out[len(out)-1], 0), nil
		}}
	case *goFault:
		return goError(x.msg)
	case *goContext:
		return x.opaque
	}
	return dontKnow("a value of Go")
}

func (m *machine) goOldList(a []*goCell, depth int) any {
	l := &list{}
	for _, c := range a {
		l.items = append(l.items, m.goOld(c.v, depth+1))
	}
	return l
}

func (m *machine) goOlds(args []goValue) []any {
	var l []any
	for _, v := range args {
		l = append(l, m.goOld(v, 0))
	}
	return l
}

// goFrom is a value of the rest of the package.
func (m *machine) goFrom(v any) goValue {
	switch x := v.(type) {
	case nil, undef:
		return goValue{nil, nil}
	case bool:
		return goValue{x, tBool}
	case integer:
		return goValue{x, tInt}
	case float64:
		return goValue{x, tFloat}
	case string:
		return goValue{x, tString}
	case *content:
		return goValue{x, tBytes}
	case *list:
		l, t := &goList{}, tStrings
		for _, i := range x.items {
			e := m.goFrom(i)
			if e.t != tString {
				t = &goType{kind: goSlice, elem: tAny}
			}
			l.a = append(l.a, &goCell{v: e})
		}
		for _, c := range l.a {
			c.t = t.elem
		}
		return goValue{l, t}
	case *object:
		if x.class != nil && x.class.name == "error" {
			msg, _ := x.get("message")
			return goValue{&goFault{msg: show(msg), path: x.holds}, tFault}
		}
		if x.dict || x.class == nil {
			t := newTable()
			for _, k := range x.keys {
				t.set(goValue{k, tString}, m.goFrom(x.cells[k].v), tAny)
			}
			return goValue{t, &goType{kind: goMap, key: tString, elem: tAny}}
		}
		return goValue{x, &goType{kind: goOutside, name: x.class.name}}
	}
	return goValue{v, nil}
}

// goResults are the results that a function of the library gives.
func (m *machine) goResults(v any) []goValue {
	if l, ok := v.(*list); ok && l.tuple {
		var out []goValue
		for _, x := range l.items {
			out = append(out, m.goFrom(x))
		}
		return out
	}
	return []goValue{m.goFrom(v)}
}

// goDuration is a method of a length of time.
func goDuration(v goValue, name string) *goClosure {
	return &goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
		n, ok := v.v.(integer)
		if !ok {
			return []goValue{{dontKnow("a time"), nil}}, nil
		}
		switch name {
		case "Seconds":
			return []goValue{{float64(n) / 1e9, tFloat}}, nil
		case "Minutes":
			return []goValue{{float64(n) / 60e9, tFloat}}, nil
		case "Hours":
			return []goValue{{float64(n) / 3600e9, tFloat}}, nil
		case "Milliseconds":
			return []goValue{{n / 1e6, tInt}}, nil
		case "String":
			return []goValue{{time.Duration(n).String(), tString}}, nil
		}
		return []goValue{{dontKnow("a time"), nil}}, nil
	}}
}

// goFaultMethod is a method of an error.
func goFaultMethod(f *goFault, name string) (goValue, bool) {
	give := func(v goValue) (goValue, bool) {
		return goValue{&goClosure{name: name, native: func(*machine, []goValue, spot) ([]goValue, error) {
			return []goValue{v}, nil
		}}, nil}, true
	}
	switch name {
	case "Error":
		return give(goValue{f.msg, tString})
	case "Unwrap":
		if len(f.causes) == 1 {
			return give(f.causes[0])
		}
		return give(goValue{nil, nil})
	}
	return goValue{}, false
}

// goText is the text of a value as fmt prints it with %v; ok is false where that is
// not known.
func (m *machine) goText(v goValue, at spot, depth int) (string, bool, error) {
	if depth > 10 {
		return "", false, nil
	}
	for _, name := range []string{"Error", "String"} {
		if f, ok := v.v.(*goFault); ok {
			return f.msg, true, nil
		}
		switch v.v.(type) {
		case *opaque, *object, nil:
			continue
		}
		fn := m.goFound(v, nil, name)
		if fn == nil || wantsPointer(fn) && v.t.kind != goPointer {
			continue
		}
		out, err := m.goCall(fn, nil, at)
		if err != nil {
			return "", false, err
		}
		if len(out) == 1 {
			t, ok := out[0].v.(string)
			return t, ok, nil
		}
	}
	switch x := v.v.(type) {
	case nil:
		if v.t.is(goSlice) {
			return "[]", true, nil
		}
		if v.t.is(goMap) {
			return "map[]", true, nil
		}
		return "<nil>", true, nil
	case bool, string:
		return show(x), true, nil
	case *content:
		return x.text, true, nil
	case integer:
		if v.t == tLength {
			return time.Duration(x).String(), true, nil
		}
		return show(x), true, nil
	case float64:
		return strconv.FormatFloat(x, 'g', -1, 64), x < 1e20 && x > -1e20, nil
	case *goList, *goRow:
		var a []*goCell
		if l, ok := x.(*goList); ok {
			a = l.a
		} else {
			a = x.(*goRow).a
		}
		var parts []string
		for _, c := range a {
			t, ok, err := m.goText(c.v, at, depth+1)
			if !ok || err != nil {
				return "", false, err
			}
			parts = append(parts, t)
		}
		return "[" + strings.Join(parts, " ") + "]", true, nil
	case *goRecord:
		var parts []string
		for _, c := range x.fields {
			t, ok, err := m.goText(c.v, at, depth+1)
			if !ok || err != nil {
				return "", false, err
			}
			parts = append(parts, t)
		}
		return "{" + strings.Join(parts, " ") + "}", true, nil
	case *goCell:
		if _, isRecord := x.v.v.(*goRecord); isRecord && depth == 0 {
			t, ok, err := m.goText(x.v, at, depth+1)
			return "&" + t, ok, err
		}
	}
	return "", false, nil
}

// goSprintf is fmt.Sprintf (package fmt of Go 1.26, "Printing").
func (m *machine) goSprintf(format string, args []goValue, at spot) (any, []goValue, error) {
	var b strings.Builder
	var causes []goValue
	next := 0
	for i := 0; i < len(format); i++ {
		if format[i] != '%' {
			b.WriteByte(format[i])
			continue
		}
		if i++; i == len(format) {
			b.WriteString("%!(NOVERB)")
			break
		}
		if format[i] == '%' {
			b.WriteByte('%')
			continue
		}
		left, plus, zero, alt := false, false, false, false
		for ; i < len(format) && strings.IndexByte("-+ 0#", format[i]) >= 0; i++ {
			left, plus, zero, alt = left || format[i] == '-', plus || format[i] == '+', zero || format[i] == '0', alt || format[i] == '#'
		}
		width, prec := 0, -1
		number := func() int {
			if i < len(format) && format[i] == '*' && next < len(args) {
				n, _ := args[next].v.(integer)
				next++
				i++
				return int(n)
			}
			n := 0
			for ; i < len(format) && format[i] >= '0' && format[i] <= '9' && n < 10_000; i++ {
				n = n*10 + int(format[i]-'0')
			}
			return n
		}
		if i < len(format) && format[i] == '[' { // which of them is meant
			end := strings.IndexByte(format[i:], ']')
			n, err := 0, error(nil)
			if end > 0 {
				n, err = strconv.Atoi(format[i+1 : i+end])
			}
			if end < 0 || err != nil || n < 1 {
				return dontKnow("a format"), nil, nil
			}
			next, i = n-1, i+end+1
		}
		width = number()
		if i < len(format) && format[i] == '.' {
			i++
			prec = number()
		}
		if i >= len(format) || width > 1000 || prec > 1000 {
			return dontKnow("a format"), nil, nil
		}
		verb := format[i]
		if next >= len(args) {
			b.WriteString("%!" + string(verb) + "(MISSING)")
			continue
		}
		v := args[next]
		next++
		if o, ok := v.v.(*opaque); ok {
			return dontKnow("a text with " + o.String()), nil, nil
		}
		text, numeric := "", false
		switch verb {
		case 'v', 's', 'w', 'q', 'd', 'x', 'X', 'o', 'b', 'c', 't', 'f', 'g', 'e', 'T', 'U':
		default:
			return dontKnow("a format"), nil, nil
		}
		switch x := v.v.(type) {
		case integer:
			if verb != 'v' && verb != 's' || m.goFound(v, nil, "String") == nil && m.goFound(v, nil, "Error") == nil {
				switch verb {
				case 'v', 'd':
					text, numeric = strconv.FormatInt(int64(x), 10), true
				case 'x':
					text, numeric = strconv.FormatInt(int64(x), 16), true
				case 'X':
					text, numeric = strings.ToUpper(strconv.FormatInt(int64(x), 16)), true
				case 'o':
					text, numeric = strconv.FormatInt(int64(x), 8), true
				case 'b':
					text, numeric = strconv.FormatInt(int64(x), 2), true
				case 'c':
					text = string(rune(x))
				case 'q':
					text = strconv.QuoteRune(rune(x))
				case 'T':
					text = v.t.String()
				default:
					text = "%!" + string(verb) + "(" + v.t.String() + "=" + show(x) + ")"
				}
				if v.t == tLength && (verb == 'v' || verb == 's') {
					text, numeric = time.Duration(x).String(), false
				}
				if plus && numeric && x >= 0 {
					text = "+" + text
				}
				if alt && numeric {
					return dontKnow("a format"), nil, nil
				}
			}
		case float64:
			switch verb {
			case 'v', 'g':
				text, numeric = strconv.FormatFloat(x, 'g', prec, 64), true
			case 'f':
				if prec < 0 {
					prec = 6
				}
				text, numeric = strconv.FormatFloat(x, 'f', prec, 64), true
			case 'T':
				text = v.t.String()
			default:
				return dontKnow("a format"), nil, nil
			}
		}
		if text == "" && !numeric {
			if verb == 'T' {
				text = v.t.String()
			} else if t, ok := v.v.(string); ok && verb == 'x' {
				for _, c := range []byte(t) {
					text += strconv.FormatInt(int64(c)+256, 16)[1:]
				}
			} else if _, isBool := v.v.(bool); verb == 't' && isBool || verb == 'v' || verb == 's' || verb == 'w' || verb == 'q' {
				t, ok, err := m.goText(v, at, 0)
				if err != nil {
					return nil, nil, err
				}
				switch v.v.(type) {
				case string, bool, *goFault:
				default:
					ok = ok && !(plus && verb == 'v') // the names of fields
				}
				if !ok || alt {
					return dontKnow("a format"), nil, nil
				}
				if _, isText := v.v.(string); verb == 'q' {
					if text = strconv.Quote(t); !isText && v.t.is(goSlice) {
						return dontKnow("a format"), nil, nil
					}
				} else if text = t; isBool && verb == 's' {
					text = "%!s(bool=" + t + ")"
				} else if v.v == nil && v.t == nil && verb == 's' {
					text = "%!s(<nil>)"
				}
				if verb == 'w' {
					causes = append(causes, v)
				}
				if r := []rune(text); prec >= 0 && prec < len(r) {
					text = string(r[:prec])
				}
			} else {
				t, ok, err := m.goText(v, at, 0)
				if err != nil {
					return nil, nil, err
				}
				if !ok {
					return dontKnow("a format"), nil, nil
				}
				text = "%!" + string(verb) + "(" + v.t.String() + "=" + t + ")"
				if v.v == nil {
					text = "%!" + string(verb) + "(<nil>)"
				}
			}
		}
		if n := width - utf8.RuneCountInString(text); n > 0 {
			switch {
			case left:
				text += strings.Repeat(" ", n)
			case zero && numeric:
				sign := ""
				if text[0] == '-' || text[0] == '+' {
					sign, text = text[:1], text[1:]
				}
				text = sign + strings.Repeat("0", n) + text
			default:
				text = strings.Repeat(" ", n) + text
			}
		}
		if b.WriteString(text); b.Len() > maxText {
			return nil, nil, spent("a text that is too long")
		}
	}
	if next < len(args) {
		return dontKnow("a format"), nil, nil
	}
	return b.String(), causes, nil
}

// goPrinted is fmt.Sprint, with spaces fmt.Sprintln without its line end.
func (m *machine) goPrinted(args []goValue, spaces bool, at spot) (any, error) {
	var b strings.Builder
	was := true // a text
	for i, v := range args {
		if o, ok := v.v.(*opaque); ok {
			return dontKnow("a text with " + o.String()), nil
		}
		_, isText := v.v.(string)
		if i > 0 && (spaces || !isText && !was) {
			b.WriteByte(' ')
		}
		was = isText
		t, ok, err := m.goText(v, at, 0)
		if err != nil {
			return nil, err
		}
		if !ok {
			return dontKnow("something as text"), nil
		}
		b.WriteString(t)
	}
	return b.String(), nil
}
