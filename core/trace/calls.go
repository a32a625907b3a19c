package trace

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/code"
)

// given evaluates the arguments of a call.
func (m *machine) given(n *code.Node, s *scope) (args []any, keys map[string]any, err error) {
	for _, a := range n.Args() {
		switch {
		case a.Is(code.Keyword):
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, err
			}
			if keys == nil {
				keys = map[string]any{}
			}
			keys[a.Name] = v
		case a.Is(code.Spread):
			v, err := m.eval(a.Kid(0), s)
			if err != nil {
				return nil, nil, err
			}
			if a.Name == "**" {
				o, ok := v.(*object)
				if !ok {
					return nil, nil, undecided("arguments that are not known")
				}
				if keys == nil {
					keys = map[string]any{}
				}
				for _, k := range o.keys {
					keys[k] = o.cells[k].v
				}
				continue
			}
			items, err := m.items(v, s)
			if err != nil {
				return nil, nil, err
			}
			args = append(args, items...)
		default:
			v, err := m.eval(a, s)
			if err != nil {
				return nil, nil, err
			}
			args = append(args, v)
		}
	}
	return args, keys, nil
}

// callNode evaluates a call.
func (m *machine) callNode(n *code.Node, s *scope) (v any, cut bool, err error) {
	callee := n.Kid(0)
	at := spot{s.module.file, n}
	nothing := func(v any) bool { return v == nil || v == any(undefined) }
	if callee.Is(code.Member) || callee.Is(code.Index) {
		base, cut, err := m.chain(callee.Kid(0), s)
		if err != nil || cut {
			return base, cut, err
		}
		if callee.Flag&code.OptionalOp != 0 && nothing(base) {
			return undefined, true, nil
		}
		name := callee.Name
		if callee.Is(code.Index) {
			k, err := m.eval(callee.Kid(1), s)
			if err != nil {
				return nil, false, err
			}
			name = show(k)
			_, isList := base.(*list)
			if _, names := base.(globalNames); names {
				isList = true
			}
			if o, isObject := base.(*object); isObject && s.python() {
				_, there := o.get(keyText(k))
				isList = !there
			}
			if isList {
				fn, err := m.index(base, callee, s)
				if err != nil {
					return nil, false, err
				}
				args, keys, err := m.given(n, s)
				if err != nil {
					return nil, false, err
				}
				v, err := m.call(fn, base, args, keys, at)
				return v, false, err
			}
		}
		if nothing(base) {
			return nil, false, m.ofNothing(base, name, s, callee)
		}
		args, keys, err := m.given(n, s)
		if err != nil {
			return nil, false, err
		}
		if v, done, err := m.builtinMethod(base, name, args, keys, s, at); done || err != nil {
			return v, false, err
		}
		fn, err := m.key(base, name, s, callee)
		if err != nil {
			return nil, false, err
		}
		if n.Flag&code.OptionalOp != 0 && nothing(fn) {
			return undefined, true, nil
		}
		if o, ok := fn.(*opaque); ok && o.path == "" && o.why == "" {
			o.why = s.module.file.Text(callee)
		}
		v, err := m.call(fn, base, args, keys, at)
		return v, false, err
	}
	if callee.Is(code.Name) && s.find(callee.Name) == nil {
		switch callee.Name {
		case "require", "import":
			if !s.python() && len(n.Kids) == 2 {
				if callee.Name == "require" && m.moduleKind(s.module.file) == "module" {
					return nil, false, certainly("ReferenceError", "require is not defined in ES module scope")
				}
				k, err := m.eval(n.Kids[1], s)
				if err != nil {
					return nil, false, err
				}
				name, ok := k.(string)
				if !ok {
					return nil, false, giveUp("a module that is named while the program runs")
				}
				if p, inTree := strings.CutPrefix(name, root+"/"); inTree {
					up := strings.Repeat("../", strings.Count(s.module.file.Name, "/"))
					name = "./" + up + p
				}
				if made := !n.Kids[1].Is(code.String); made { // one that the name leads to is there, or nothing is
					m.trying++
					defer func() { m.trying-- }()
				}
				v, err := m.require(name, s)
				return v, false, err
			}
		case "super":
			if !s.python() {
				args, _, err := m.given(n, s)
				if err != nil {
					return nil, false, err
				}
				for x := s; x != nil; x = x.up {
					if x.fn != nil && x.fn.props != nil {
						if f, ok := x.fn.props.get("\x00super"); ok {
							v, err := m.call(f, undefined, args, nil, at)
							return v, false, err
						}
					}
				}
				return nil, false, giveUp("a base that is not followed")
			}
			for x := s; x != nil; x = x.up {
				if x.fn != nil && x.fn.home != nil {
					return &super{x.fn.home, x.this}, false, nil
				}
			}
		}
	}
	if (callee.Is(code.Name) || callee.Is(code.Member)) && callee.Name == "__awaiter" && !s.python() && len(n.Kids) == 5 { // TypeScript's helper of that name
		args, _, err := m.given(n, s)
		if err != nil {
			return nil, false, err
		}
		if f, ok := at2(args, 3).(*function); ok && f.node != nil {
			w := *f
			w.awaits = true
			v, err := m.call(&w, first(args), nil, nil, at)
			return v, false, err
		}
	}
	fn, cut, err := m.chain(callee, s)
	if err != nil || cut {
		return fn, cut, err
	}
	if n.Flag&code.OptionalOp != 0 && nothing(fn) {
		return undefined, true, nil
	}
	args, keys, err := m.given(n, s)
	if err != nil {
		return nil, false, err
	}
	v, err = m.call(fn, undefined, args, keys, at)
	return v, false, err
}

// interop are functions that compilers and bundlers put into their output: they copy what
// a module exports, with a default. A package is that itself here (esbuild 0.25,
// TypeScript 5, Babel 7 and Rollup 4: their own output, 2026-11).
var interop = words("__toESM __importStar __importDefault _interopRequireDefault _interopRequireWildcard _interopNamespace _interopNamespaceDefault _interopDefault _interopDefaultLegacy")

// call calls something.
func (m *machine) call(fn, this any, args []any, keys map[string]any, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	switch f := fn.(type) {
	case *function:
		if f.bound || f.node != nil && f.this != nil && this == any(undefined) {
			this = f.this
		}
		if f.cli != nil {
			return m.runCommand(f, at)
		}
		if f.native != nil {
			return f.native(m, this, args, keys, at)
		}
		if f.memo != nil {
			return m.remembered(f, this, args, keys, at)
		}
		if g, ok := first(args).(*function); ok && f.name == "_asyncToGenerator" && g.node != nil && javascript(at.f.Lang) { // Babel's helper of that name
			return &function{name: g.name, native: func(m *machine, this any, args []any, keys map[string]any, at spot) (any, error) {
				w := *g
				w.awaits = true
				return m.call(&w, this, args, keys, at)
			}}, nil
		}
		if o, ok := first(args).(*opaque); ok && interop[f.name] && o.path != "" && javascript(at.f.Lang) {
			return o, nil
		}
		return m.invoke(f, this, args, keys, at)
	case *class:
		if at.f.Lang != code.Python && !f.builtin {
			return nil, raise("TypeError", "a class is called without new")
		}
		return m.create(f, args, keys, at)
	case *object:
		if c := m.method(f, "__call__"); c != nil {
			return m.call(c, f, args, keys, at)
		}
	case *opaque:
		return m.outsideCall(f, args, keys, at)
	}
	return nil, m.noFunction(fn, at)
}

// remembered runs a function that keeps what it gave for the same arguments (Python 3.14
// library reference, functools.lru_cache).
func (m *machine) remembered(f *function, this any, args []any, keys map[string]any, at spot) (any, error) {
	var b strings.Builder
	write := func(v any) bool {
		switch v := v.(type) {
		case nil, undef, bool, integer, float64, string, pyPath:
			fmt.Fprintf(&b, "%T %q,", v, fmt.Sprint(v))
		case *object, *class, *function, *envMap, *module:
			fmt.Fprintf(&b, "%T %p,", v, v)
		default:
			return false
		}
		return true
	}
	ok := write(this)
	for _, x := range args {
		ok = ok && write(x)
	}
	for _, k := range sortedKeys(keys) {
		b.WriteString(k + "=")
		ok = ok && write(keys[k])
	}
	if v, had := f.memo[b.String()]; had && ok {
		return v, nil
	}
	v, err := m.invoke(f, this, args, keys, at)
	if err == nil && ok {
		f.memo[b.String()] = v
	}
	return v, err
}

// invoke runs a function of the tree.
func (m *machine) invoke(f *function, this any, args []any, keys map[string]any, at spot) (any, error) {
	if m.depth++; m.depth > maxDepth {
		return nil, spent("functions that call each other without end")
	}
	defer func() { m.depth-- }()
	if f.scope.ruby() {
		var kw *object
		if len(keys) > 0 {
			kw = newObject()
			kw.dict = true
			for _, k := range sortedKeys(keys) {
				kw.set(symbolKey+k, keys[k])
			}
		}
		if this == any(undefined) {
			this = m.rb().main
		}
		return m.rbInvoke(f, this, args, kw, nil, at)
	}
	if f.scope.java() {
		return m.jvInvoke(f, this, args, at)
	}
	if f.scope.php() {
		return m.phInvokeKeys(f, this, args, keys, nil, at)
	}
	file := f.scope.module.file
	py := f.scope.python()
	s := &scope{vars: map[string]*cell{}, up: f.scope, module: f.scope.module, this: this, fn: f, own: true, static: file.Funcs[f.node]}
	if !py && f.bound {
		s.this = f.this
	}
	if !py {
		s.given = args
	}
	params := f.node.Kid(0)
	if py && f.node.Flag&code.Method != 0 && f.home != nil && !f.static && this != any(undefined) {
		args = append([]any{this}, args...)
	} else if py && f.classOf {
		args = append([]any{f.this}, args...)
	}
	used := 0
	taken := map[string]bool{}
	for i, p := range paramsOf(params) {
		switch {
		case p.Flag&code.Rest != 0 && py && doubleStar(p, file):
			o := newObject()
			o.dict = true
			for _, k := range sortedKeys(keys) {
				if !taken[k] {
					o.set(k, keys[k])
				}
			}
			s.declare(p.Name, o)
			keys = nil
			continue
		case p.Flag&code.Rest != 0:
			l := &list{tuple: py}
			if used < len(args) {
				l.items = slices.Clone(args[used:])
			}
			used = len(args)
			if p.Kid(1) != nil {
				if err := m.assign(p.Kid(1), l, s, "let"); err != nil {
					return nil, err
				}
				continue
			}
			s.declare(p.Name, l)
			continue
		}
		v, ok := any(undefined), false
		if used < len(args) {
			v, ok = args[used], true
			used++
		} else if py {
			if v, ok = keys[p.Name]; ok {
				taken[p.Name] = true
			}
		}
		if _, isUndef := v.(undef); (!ok || isUndef && !py) && p.Kid(0) != nil {
			var err error
			in := s
			if py {
				in = f.scope
			}
			if kept, defined := f.falls[p.Kids[0]]; defined {
				v = kept
			} else if v, err = m.eval(p.Kids[0], in); err != nil {
				return nil, err
			}
			ok = true
		}
		if !ok && py {
			return nil, raise("TypeError", "a missing argument: "+p.Name)
		}
		if p.Kid(1) != nil {
			if !known(v) && !named(v) || v == any(undefined) {
				v = dontKnow("an argument")
			}
			if err := m.assign(p.Kids[1], v, s, "let"); err != nil {
				return nil, err
			}
			continue
		}
		s.declare(p.Name, v)
		_ = i
	}
	body := f.node.Kid(1)
	run := func() (any, error) {
		if f.node.Flag&code.Arrow != 0 {
			return m.eval(body, s)
		}
		err := m.block(body.Kids, s)
		if l, ok := err.(*leave); ok && l.kind == "return" {
			return l.v, nil
		}
		if err != nil {
			return nil, err
		}
		if py {
			return nil, nil
		}
		return undefined, nil
	}
	if s.awaits = f.awaits; f.awaits {
		v, err := run()
		if t, ok := err.(*thrown); ok {
			m.unhandled = t
			return &promise{err: t}, nil
		}
		if p, ok := v.(*promise); ok || err != nil {
			return p, err
		}
		return &promise{v: v}, nil
	}
	if gives(body) {
		l := &list{gen: true}
		m.yields = append(m.yields, l)
		_, err := run()
		m.yields = m.yields[:len(m.yields)-1]
		if x, ok := err.(*exit); ok && x.stays && py && len(l.items) > 0 { // behind what it gives first: that is come to later
			err, m.staysLater = nil, true
		}
		return l, err
	}
	if py && f.node.Flag&code.Async != 0 {
		return &coroutine{run: func() (any, error) {
			v, err := run()
			return m.calmed(f, v, err)
		}}, nil
	}
	v, err := run()
	v, err = m.calmed(f, v, err)
	if f.node.Flag&code.Async == 0 {
		return v, err
	}
	if t, ok := err.(*thrown); ok {
		m.unhandled = t
		return &promise{err: t}, nil
	}
	if err != nil {
		return nil, err
	}
	if p, ok := v.(*promise); ok {
		return p, nil
	}
	return &promise{v: v}, nil
}

func paramsOf(n *code.Node) []*code.Node {
	if n == nil {
		return nil
	}
	return n.Kids
}

func doubleStar(p *code.Node, f *code.File) bool {
	return int(p.Off)+1 < len(f.Src) && f.Src[p.Off] == '*' && f.Src[p.Off+1] == '*'
}

func sortedKeys(keys map[string]any) []string {
	var list []string
	for k := range keys {
		list = append(list, k)
	}
	slices.Sort(list)
	return list
}

// gives reports whether a function is a generator.
func gives(body *code.Node) bool {
	found := false
	body.Walk(func(k *code.Node) bool {
		found = found || k.Name == code.Yield && (k.Is(code.Await) || k.Is(code.Unknown))
		return !found && !k.Is(code.Func)
	})
	return found
}

func (m *machine) newNode(n *code.Node, s *scope) (any, error) {
	if n.Kid(0) == nil {
		return nil, giveUp("what is made anew")
	}
	fn, err := m.eval(n.Kids[0], s)
	if err != nil {
		return nil, err
	}
	args, keys, err := m.given(n, s)
	if err != nil {
		return nil, err
	}
	at := spot{s.module.file, n}
	switch f := fn.(type) {
	case *class:
		return m.create(f, args, keys, at)
	case *function:
		if f.node == nil {
			return m.call(f, undefined, args, keys, at)
		}
		o := newObject()
		o.class = &class{name: f.name, methods: newObject(), statics: newObject(), scope: f.scope, node: f.node}
		if f.props != nil && f.props.cells["prototype"] != nil {
			o.proto = prototypeOf(f)
			for p, n := o.proto, 0; p != nil && n < 16; p, n = p.proto, n+1 {
				if p.outside != nil {
					o.class.bases = []any{p.outside}
				}
			}
		}
		v, err := m.invoke(f, o, args, nil, at)
		if r, ok := v.(*object); ok && err == nil {
			return r, nil
		}
		return o, err
	case *opaque:
		if v, done, err := m.made(f, args, at); done || err != nil {
			return v, err
		}
		v, err := m.outsideCall(f, args, keys, at)
		if o, ok := v.(*opaque); ok && o.path != "" {
			o.fresh = true
		}
		return v, err
	}
	return nil, giveUp("what is made anew: %s", s.module.file.Text(n))
}

// promising are methods that call what they are given once something is done.
var promising = map[string]bool{"then": true, "finally": true, "tap": true}

// passed are methods whose functions are called for what happens later, or
// never: events, routes, errors.
var passed = map[string]bool{"catch": true, "on": true, "once": true, "addEventListener": true, "setInterval": true, "use": true, "get": true, "post": true, "put": true,
	"delete": true, "patch": true, "all": true, "route": true, "addHook": true, "off": true, "setErrorHandler": true, "createServer": true, "listen": true, "serve": true, "onError": true, "notFound": true, "signal": true, "errorhandler": true, "add_url_rule": true, "register": true, "setNotFoundHandler": true}

// outsideCall calls something outside of the tree: what is given back is not
// known, but for its path.
func (m *machine) outsideCall(o *opaque, args []any, keys map[string]any, at spot) (any, error) {
	if v, done, err := m.builtin(o, args, keys, at); done || err != nil {
		return v, err
	}
	if o.path == "" {
		m.handed(args, keys, "", at)
		return dontKnow("what " + o.why + " gives"), nil
	}
	if of := o.recv; of != nil && javascript(at.f.Lang) && strings.HasSuffix(o.path, ".bind") && of.recv != nil && !strings.HasSuffix(of.path, "()") { // a method, bound
		if len(args) < 2 {
			return of, nil
		}
		given := slices.Clone(args[1:])
		return &function{native: func(m *machine, _ any, args []any, keys map[string]any, at spot) (any, error) {
			return m.outsideCall(of, append(slices.Clone(given), args...), keys, at)
		}}, nil
	}
	if o.self != nil && strings.HasPrefix(o.path, "gunicorn.app.") && strings.HasSuffix(o.path, ".run") {
		return nil, m.gunicorn(o, at)
	}
	m.served = m.served || endless[o.path]
	if m.note(o, args, keys, at) {
		return nil, &exit{stays: true}
	}
	if o.self != nil {
		m.waiting = m.waiting || holdsCode(o.self, 0)
	}
	name := o.path[strings.LastIndexByte(o.path, '.')+1:]
	if at.f.Lang == code.Go {
		if goServes[o.path] || (name == "Serve" || name == "ServeTLS" || name == "Listener" && strings.HasPrefix(o.path, "github.com/gofiber/fiber")) && goMethodPath(o.path) { // of a server that was made
			return nil, &exit{stays: true}
		}
	}
	back := &opaque{path: o.path + "()", recv: o, args: args, keys: keys, fresh: makers[o.path] || at.f.Lang == code.Python && classNamed(name)}
	switch word, isText := first(args).(string); {
	case name == "add_subparsers" && keys["dest"] != nil:
		m.verbs = append(m.verbs, verb{dest: show(keys["dest"])})
	case name == "add_parser" && isText && len(m.verbs) > 0:
		last := &m.verbs[len(m.verbs)-1]
		last.words = append(last.words, word)
		if l, ok := keys["aliases"].(*list); ok {
			for _, x := range l.items {
				last.words = append(last.words, show(x))
			}
		}
	}
	if name == "set_defaults" && o.recv != nil && len(keys) > 0 {
		m.parsers = append(m.parsers, parser{o.recv, keys})
		return back, nil
	}
	if len(back.path) > 400 {
		return dontKnow("a chain of calls"), nil
	}
	if promising[name] {
		for _, a := range args[:min(1, len(args))] {
			if f, ok := a.(*function); ok {
				var given any = dontKnow("what " + o.path + " gives")
				if name == "then" && javascript(at.f.Lang) && o.recv != nil && strings.HasSuffix(o.recv.path, "()") { // as await has it
					given = o.recv
				}
				v, err := m.call(f, undefined, []any{given}, nil, at)
				if err != nil {
					return nil, err
				}
				if _, isOpaque := v.(*opaque); !isOpaque {
					if p, ok := v.(*promise); ok {
						return p, nil
					}
					return &promise{v: v}, nil
				}
				return v, nil
			}
		}
		return back, nil
	}
	m.handed(args, keys, name, at)
	return back, nil
}

// holdsCode reports whether a function is somewhere in a value.
func holdsCode(v any, depth int) bool {
	switch v := v.(type) {
	case *function:
		return true
	case *list:
		for _, x := range v.items {
			if depth < 4 && holdsCode(x, depth+1) {
				return true
			}
		}
	case *object:
		for _, c := range v.cells {
			if depth < 4 && holdsCode(c.v, depth+1) {
				return true
			}
		}
	}
	return false
}

// handed notes functions that are given away, and calls those that are most
// likely called once, when all went well.
func (m *machine) handed(args []any, keys map[string]any, name string, at spot) {
	for _, v := range keys {
		m.waiting = m.waiting || holdsCode(v, 0)
	}
	for _, a := range args {
		m.waiting = m.waiting || holdsCode(a, 0)
		f, ok := a.(*function)
		if !ok {
			continue
		}
		m.waiting = true
		m.turned(f, name)
		if !passed[name] && f.node != nil && javascript(at.f.Lang) {
			m.kept = append(m.kept, job{f, nil, at})
		}
	}
}
