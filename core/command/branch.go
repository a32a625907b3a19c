package command

import (
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/value"
)

// builtin are commands of the shell that start nothing that stays.
var builtin = map[string]bool{
	"export": true, "set": true, "source": true, ".": true, "echo": true, "trap": true, "wait": true, "true": true, "sleep": true, ":": true, "printf": true,
	"[": true, "test": true, "cd": true, "unset": true, "shift": true, "exit": true, "return": true, "false": true,
}

// set gives a variable of the script its value.
func (r *lineReader) set(name string, v *value.Value) {
	if r.vars == nil {
		r.vars = map[string]*value.Value{}
	}
	if n := 0; large(v, &n) {
		v = value.NotKnown("a text that is too long to be followed", v.At)
	}
	r.vars[name] = v
	delete(r.folders, name)
	delete(r.rooted, name)
	delete(r.absent, name)
	if r.exported["-a"] {
		r.exported[name] = true
	}
}

// passed is a variable as the programs of the script get it: as it is when it
// is exported, and else only where the environment had it before (POSIX.1-2024,
// "2.5.3 Shell Variables" and "2.12 Shell Execution Environment").
func (r *lineReader) passed(name string) *value.Value {
	v := r.vars[name]
	if r.exported[name] || r.exported["-a"] {
		return v
	}
	had := &value.Value{Kind: value.Op, Text: "isset", Kids: []*value.Value{value.Variable(name, value.ReadsUndef, v.At)}, At: v.At}
	return &value.Value{Kind: value.Cond, Kids: []*value.Value{had, v, {Kind: value.Undef, At: v.At}}, At: v.At}
}

// chained are the commands of A && B && C, in their order; nil for any other command.
func chained(b *syntax.BinaryCmd) []*syntax.Stmt {
	if b.Op != syntax.AndStmt {
		return nil
	}
	var list []*syntax.Stmt
	if in, ok := b.X.Cmd.(*syntax.BinaryCmd); ok && !b.X.Negated && !b.X.Background && len(b.X.Redirs) == 0 {
		if list = chained(in); list == nil {
			return nil
		}
		return append(list, b.Y)
	}
	return []*syntax.Stmt{b.X, b.Y}
}

// inTurn reads commands of which each runs only where the one before it succeeds.
func (r *lineReader) inTurn(list []*syntax.Stmt, guarded bool) {
	for i, s := range list {
		if i+1 == len(list) {
			r.stmt(s, guarded)
			return
		}
		if test, not := r.test(s); test != nil || tests(s) {
			r.choose(test, not, func() { r.inTurn(list[i+1:], true) }, nil)
			return
		}
		if r.stmt(s, guarded); r.leaves != "" {
			return
		}
	}
}

// tests reports whether a command is a test of any kind.
func tests(s *syntax.Stmt) bool {
	switch c := s.Cmd.(type) {
	case *syntax.TestClause:
		return true
	case *syntax.CallExpr:
		return len(c.Args) > 0 && (c.Args[0].Lit() == "[" || c.Args[0].Lit() == "test")
	}
	return false
}

// surely reports whether a command succeeds, or does not come back: so what stands behind
// an || after it is not run.
func surely(s *syntax.Stmt) bool {
	c, ok := s.Cmd.(*syntax.CallExpr)
	if !ok || s.Negated || s.Background {
		return false
	}
	if len(c.Args) == 0 { // a substitution hands its end on
		return len(c.Assigns) > 0 && !slices.ContainsFunc(c.Assigns, func(a *syntax.Assign) bool {
			found := false
			syntax.Walk(a, func(n syntax.Node) bool {
				_, sub := n.(*syntax.CmdSubst)
				found = found || sub
				return !found
			})
			return found
		})
	}
	switch c.Args[0].Lit() {
	case "echo", "printf", "export", "true", ":", "exec", "exit":
		return true
	}
	return false
}

// arguments notes what shift and set do to the arguments of the script
// (POSIX.1-2024, "shift" and "set").
func (r *lineReader) arguments(name string, given []*syntax.Word) {
	switch {
	case name == "shift" && len(given) == 1 && len(r.within) == 0 && r.rest != nil && mentions(given[0], "OPTIND"):
		r.args = r.rest
	case name == "shift" && len(given) == 0 && len(r.within) == 0 && len(r.args) > 0:
		r.args = r.args[1:]
	case name == "shift" && len(given) == 1 && len(r.within) == 0 && r.given && strings.Trim(given[0].Lit(), "0123456789") == "" && given[0].Lit() != "":
		if n, err := strconv.Atoi(given[0].Lit()); err == nil {
			r.args = r.args[min(n, len(r.args)):]
		}
	case name == "set" && len(given) > 0 && given[0].Lit() == "--" && len(r.within) == 0 && r.given && len(given) <= 64:
		list := r.words(given[1:])
		r.args = list
		if len(list) > 64 {
			r.given, r.other = false, true
		}
	case name == "shift" && len(r.args) > 0, name == "set" && len(given) > 0 && (given[0].Lit() == "--" || given[0].Lit() == "-"):
		r.other = r.other || r.given
		r.given = false
	}
}

// options reads a loop of getopts over the arguments of the script, a turn for each
// option; false for any other loop (POSIX.1-2024, "getopts").
func (r *lineReader) options(c *syntax.WhileClause, guarded bool) bool {
	if !r.given || len(r.within) > 0 || len(c.Cond) != 1 || c.Until {
		return false
	}
	call, ok := c.Cond[0].Cmd.(*syntax.CallExpr)
	if !ok || len(call.Args) != 3 || call.Args[0].Lit() != "getopts" {
		return false
	}
	letters, name := r.word(call.Args[1]), call.Args[2].Lit()
	if !letters.Literal() || !syntax.ValidName(name) {
		return false
	}
	at := r.o.span(c.Pos(), c.End())
	args, turns := r.args, 0
	for len(args) > 0 {
		a := args[0]
		if turns += len(a.Text); !a.Literal() || turns > 256 || len(c.Do) > 32 {
			return false
		}
		if a.Text == "--" {
			args = args[1:]
			break
		}
		if len(a.Text) < 2 || a.Text[0] != '-' {
			break
		}
		args = args[1:]
		for text := a.Text[1:]; text != ""; {
			letter := text[:1]
			text = text[1:]
			i := strings.Index(letters.Text, letter)
			r.set("OPTARG", value.Text("", at))
			switch {
			case i < 0 || letter == ":":
				letter = "?"
			case strings.HasPrefix(letters.Text[i+1:], ":"):
				arg := value.Text(text, a.At)
				if text == "" {
					if len(args) == 0 {
						return false
					}
					arg, args = args[0].Value, args[1:]
				}
				r.set("OPTARG", arg)
				text = ""
			}
			r.set(name, value.Text(letter, a.At))
			r.stmts(c.Do, guarded)
		}
	}
	r.rest = args
	return true
}

// turns reads a loop whose condition can be told each time, such as one over the
// arguments of the script; false for any other loop.
func (r *lineReader) turns(c *syntax.WhileClause, guarded bool) bool {
	if len(c.Cond) != 1 || len(r.within) > 0 {
		return false
	}
	for {
		test := r.condition(c.Cond[0])
		if r.unrolled++; test == nil || len(test.Variables()) > 0 || r.unrolled > maxCalls {
			return false
		}
		holds, ok := test.Under(value.Environ{}).Truth(false)
		if !ok {
			return false
		}
		if holds == c.Until {
			return true
		}
		r.stmts(c.Do, guarded)
	}
}

// argument is $1 and so on, or how many there are; nil where that is not known.
func (r *lineReader) argument(name string, at place.Span) *value.Value {
	if !r.given {
		return nil
	}
	if name == "#" {
		return value.Text(strconv.Itoa(len(r.args)), at)
	}
	n, err := strconv.Atoi(name)
	switch {
	case err != nil || n < 1:
		return nil
	case n > len(r.args):
		return value.Text("", at)
	}
	return r.args[n-1].Value
}

// array notes a list of words: NAME=(a b), NAME+=(c) (GNU Bash 5.3 manual,
// "Arrays").
func (r *lineReader) array(a *syntax.Assign) {
	if r.arrays == nil {
		r.arrays = map[string][]Word{}
	}
	if r.table(a) {
		return
	}
	list := []Word{}
	if a.Append {
		list = append(list, r.arrays[a.Name.Value]...)
	}
	known := len(r.within) == 0 && (!a.Append || r.arrays[a.Name.Value] != nil)
	for _, e := range a.Array.Elems {
		switch more, ok := []Word(nil), false; {
		case e.Index != nil || e.Value == nil:
			known = false
		default:
			if r.given && whole(e.Value) {
				more, ok = r.args, true
			} else {
				more, ok = r.elements(e.Value)
			}
			if ok {
				list = append(list, more...)
			} else {
				list = append(list, r.word(e.Value))
			}
		}
	}
	if r.arrays[a.Name.Value] = list; !known || len(list) > 64 {
		r.arrays[a.Name.Value] = nil
	}
}

// table notes a list of words by names, NAME=([a]=b [c]=d); false for any other list (GNU
// Bash 5.3 manual, "Arrays").
func (r *lineReader) table(a *syntax.Assign) bool {
	if len(a.Array.Elems) == 0 || len(a.Array.Elems) > 64 {
		return false
	}
	t := map[string]*value.Value{}
	if a.Append {
		maps.Copy(t, r.tables[a.Name.Value])
	}
	known := len(r.within) == 0
	for _, e := range a.Array.Elems {
		w, ok := e.Index.(*syntax.Word)
		if !ok || e.Value == nil {
			return false
		}
		k, ok := r.known(r.word(w).Value)
		known = known && ok
		t[k] = r.word(e.Value).Value
	}
	if r.tables == nil {
		r.tables = map[string]map[string]*value.Value{}
	}
	if r.tables[a.Name.Value] = t; !known {
		r.tables[a.Name.Value] = nil
	}
	delete(r.arrays, a.Name.Value)
	return true
}

// setsElement notes NAME[KEY]=WORD.
func (r *lineReader) setsElement(a *syntax.Assign) {
	name := a.Name.Value
	w, ok := a.Index.(*syntax.Word)
	k, sure := "", false
	if ok {
		k, sure = r.known(r.word(w).Value)
	}
	v := value.Text("", r.o.at)
	if a.Value != nil {
		v = r.word(a.Value).Value
	}
	if list, n := r.arrays[name], 0; list != nil {
		var err error
		if n, err = strconv.Atoi(k); sure && err == nil && n >= 0 && n < len(list) && len(r.within) == 0 {
			list = slices.Clone(list)
			list[n] = Word{Value: v, Text: opening(v), At: v.At}
			r.arrays[name] = list
			return
		}
		r.arrays[name] = nil
		return
	}
	if r.tables == nil {
		r.tables = map[string]map[string]*value.Value{}
	}
	t := maps.Clone(r.tables[name])
	if t == nil {
		t = map[string]*value.Value{}
	}
	if t[k] = v; !sure || len(r.within) > 0 {
		t = nil
	}
	r.tables[name] = t
}

// elements are the words that "${NAME[@]}" stands for; ok is false for any other
// word, and for a list that is not known.
func (r *lineReader) elements(w *syntax.Word) (list []Word, ok bool) {
	if len(w.Parts) != 1 {
		return nil, false
	}
	part := w.Parts[0]
	if q, quoted := part.(*syntax.DblQuoted); quoted && len(q.Parts) == 1 {
		part = q.Parts[0]
	}
	p, ok := part.(*syntax.ParamExp)
	if !ok || p.Param == nil || p.Index == nil || p.Exp != nil || p.Slice != nil || p.Repl != nil || p.Length {
		return nil, false
	}
	if i, isWord := p.Index.(*syntax.Word); !isWord || i.Lit() != "@" && i.Lit() != "*" {
		return nil, false
	}
	list = r.arrays[p.Param.Value]
	return list, list != nil
}

// mentions reports whether a word is made of a variable.
func mentions(w *syntax.Word, name string) bool {
	found := false
	syntax.Walk(w, func(n syntax.Node) bool {
		if l, ok := n.(*syntax.Lit); ok {
			found = found || l.Value == name
		}
		return !found
	})
	return found
}

// whole reports whether a word is all arguments of the script: "$@".
func whole(w *syntax.Word) bool {
	if len(w.Parts) != 1 {
		return false
	}
	part := w.Parts[0]
	if q, ok := part.(*syntax.DblQuoted); ok && len(q.Parts) == 1 {
		part = q.Parts[0]
	}
	p, ok := part.(*syntax.ParamExp)
	return ok && p.Param != nil && p.Param.Value == "@" && p.Exp == nil && p.Slice == nil && p.Index == nil && p.Repl == nil && !p.Length
}

// choose reads what runs when a test holds, and what when it does not, and
// gives the variables that either sets the value that the test decides on. A
// test of nil is one that cannot be told.
func (r *lineReader) choose(test *value.Value, not bool, then, otherwise func()) {
	if test != nil && len(test.Variables()) == 0 {
		if holds, ok := test.Under(value.Environ{}).Truth(false); ok {
			if holds != not {
				then()
			} else if otherwise != nil {
				otherwise()
			}
			return
		}
	}
	if test != nil && r.with != nil { // the environment decides
		if holds, ok := test.Under(*r.with).Truth(false); ok {
			if holds != not {
				then()
			} else if otherwise != nil {
				otherwise()
			}
			return
		}
	}
	yes := r.branch(then, Test{test, not}) // in the order in which they stand
	no := r.branch(otherwise, Test{test, !not})
	if not {
		yes, no = no, yes
	}
	names := map[string]bool{}
	for n := range yes {
		names[n] = true
	}
	for n := range no {
		names[n] = true
	}
	for _, n := range slices.Sorted(maps.Keys(names)) {
		y, x := yes[n], no[n]
		if y == x {
			continue
		}
		at := r.o.at
		if y != nil && y != r.vars[n] {
			at = y.At
		} else if x != nil {
			at = x.At
		}
		if y == nil {
			y = value.Variable(n, value.ReadsEmpty, at)
		}
		if x == nil {
			x = value.Variable(n, value.ReadsEmpty, at)
		}
		t := test
		if t == nil {
			t = value.NotKnown("a condition of the script", at)
		}
		v := &value.Value{Kind: value.Cond, Kids: []*value.Value{t, y, x}, At: at}
		r.set(n, v)
		r.list = append(r.list, Simple{Env: []Assign{{Name: n, Value: r.passed(n), At: at}}, Guarded: true, At: at})
	}
}

// branch reads a part that may not run and gives the variables after it.
// Where it starts no program, what it sets counts only through these.
func (r *lineReader) branch(run func(), on Test) map[string]*value.Value {
	saved, before := r.vars, len(r.list)
	if run == nil {
		return saved
	}
	r.vars = maps.Clone(saved)
	r.branches++
	r.within, r.tests = append(r.within, r.branches), append(r.tests, on)
	run()
	r.within, r.tests = r.within[:len(r.within)-1], r.tests[:len(r.tests)-1]
	after := r.vars
	r.vars = saved
	starts := slices.ContainsFunc(r.list[before:], func(s Simple) bool { return len(s.Words) > 0 && !builtin[s.Words[0].Text] })
	if !starts { // all but the end of the script
		kept := slices.DeleteFunc(slices.Clone(r.list[before:]), func(s Simple) bool { return len(s.Words) == 0 || s.Words[0].Text != "exit" })
		r.list = append(r.list[:before], kept...)
	}
	return after
}

func (r *lineReader) ifClause(c *syntax.IfClause) {
	if c == nil {
		return
	}
	if len(c.Cond) == 0 { // a plain else
		r.stmts(c.Then, true)
		return
	}
	var test *value.Value
	not := false
	if len(c.Cond) == 1 {
		test, not = r.test(c.Cond[0])
	}
	var otherwise func()
	if c.Else != nil {
		otherwise = func() { r.ifClause(c.Else) }
	}
	r.choose(test, not, func() { r.stmts(c.Then, true) }, otherwise)
}

// caseItems reads the branches of a case, each the alternative of those
// before it. In the branch of a text alone, the variable that it is about holds it.
func (r *lineReader) caseItems(word *value.Value, items []*syntax.CaseItem, about string) {
	if len(items) == 0 {
		return
	}
	i := items[0]
	body := func() {
		for k := range items { // ;& goes on with the next, ;;& with the tests of the rest
			if r.stmts(items[k].Stmts, true); items[k].Op == syntax.Resume {
				r.caseItems(word, items[k+1:], about)
			}
			if items[k].Op != syntax.Fallthrough {
				return
			}
		}
	}
	var test, holds *value.Value
	for k, p := range i.Patterns {
		pat := r.word(p)
		if pat.Bare && pat.Text == "*" {
			body()
			return
		}
		var one *value.Value
		if pat.Literal() && !strings.ContainsAny(pat.Text, "*?[") {
			one = same(word, pat.Value)
			if about != "" && len(i.Patterns) == 1 && len(r.funcs) > 0 {
				holds = pat.Value
			}
		} else {
			one = value.Shell("glob", pat.At, word, r.pattern(p))
		}
		if k == 0 {
			test = one
		} else {
			test = &value.Value{Kind: value.Op, Text: "||", Kids: []*value.Value{test, one}, At: one.At}
		}
	}
	r.choose(test, false, func() {
		if holds != nil {
			r.set(about, holds)
		}
		body()
	}, func() { r.caseItems(word, items[1:], about) })
}

// same compares two texts.
func same(a, b *value.Value) *value.Value {
	return &value.Value{Kind: value.Op, Text: "===", Kids: []*value.Value{a, b}, At: a.At}
}

// test reads a test of texts: [ -z X ], [ -n X ], [ X ], [ X = Y ], [ X != Y ]
// and the same in double brackets (POSIX.1-2024, "test"). It is nil for every
// other command; not says that it holds where the value does not.
func (r *lineReader) test(s *syntax.Stmt) (test *value.Value, not bool) {
	if s == nil || s.Background {
		return nil, false
	}
	at := r.o.span(s.Pos(), s.End())
	switch c := s.Cmd.(type) {
	case *syntax.ArithmCmd:
		if n := r.reckons(c.X); n != nil {
			return value.Yes(at), s.Negated != (*n == 0)
		}
		return nil, false
	case *syntax.BinaryCmd: // [ X ] && [ Y ]
		if c.Op != syntax.AndStmt && c.Op != syntax.OrStmt || sets(c) {
			return nil, false
		}
		last := r.condition(c.Y)
		if last == nil { // before the rest is looked at: chains are long
			return nil, false
		}
		return joined(r.condition(c.X), last, c.Op == syntax.AndStmt, at), s.Negated
	case *syntax.CallExpr:
		if len(c.Args) == 1 && (c.Args[0].Lit() == "true" || c.Args[0].Lit() == ":") {
			return value.Yes(at), s.Negated
		}
	}
	empty := func(w *syntax.Word) *value.Value {
		v := r.word(w).Value
		return same(v, value.Text("", v.At))
	}
	switch c := s.Cmd.(type) {
	case *syntax.CallExpr:
		if len(c.Args) == 0 {
			return nil, false
		}
		args := c.Args
		switch name := args[0].Lit(); {
		case name == "test":
			args = args[1:]
		case name == "[" && args[len(args)-1].Lit() == "]":
			args = args[1 : len(args)-1]
		case name == "true" || name == ":" || name == "false":
			return value.Yes(at), s.Negated != (name == "false")
		default:
			return nil, false
		}
		not = s.Negated
		for _, op := range []string{"-o", "-a"} { // A -a B
			for i := 1; i+1 < len(args); i++ {
				if args[i].Lit() == op && len(args) > 4 {
					half := func(list []*syntax.Word) *value.Value {
						return r.condition(&syntax.Stmt{Position: s.Position, Cmd: &syntax.CallExpr{Args: append([]*syntax.Word{{Parts: []syntax.WordPart{&syntax.Lit{Value: "test"}}}}, list...)}})
					}
					return joined(half(args[:i]), half(args[i+1:]), op == "-a", at), not
				}
			}
		}
		if len(args) > 1 && args[0].Lit() == "!" {
			args, not = args[1:], !not
		}
		switch {
		case len(args) == 1:
			return empty(args[0]), !not
		case len(args) == 2 && r.there(args[0].Lit(), args[1]):
			return value.Yes(r.o.span(c.Pos(), c.End())), not
		case len(args) == 2 && r.missing(args[0].Lit(), args[1]):
			return value.Yes(r.o.span(c.Pos(), c.End())), !not
		case len(args) == 2 && args[0].Lit() == "-z":
			return empty(args[1]), not
		case len(args) == 2 && args[0].Lit() == "-n":
			return empty(args[1]), !not
		case len(args) == 3 && (args[1].Lit() == "=" || args[1].Lit() == "==" || args[1].Lit() == "-eq"):
			return same(r.word(args[0]).Value, r.word(args[2]).Value), not
		case len(args) == 3 && (args[1].Lit() == "!=" || args[1].Lit() == "-ne"):
			return same(r.word(args[0]).Value, r.word(args[2]).Value), !not
		case len(args) == 3 && numeric[args[1].Lit()] != "":
			return value.Compared(numeric[args[1].Lit()], r.word(args[0]).Value, r.word(args[2]).Value, at), not
		}
	case *syntax.TestClause:
		not = s.Negated
		x := c.X
		if b, ok := x.(*syntax.BinaryTest); ok && (b.Op == syntax.AndTest || b.Op == syntax.OrTest) { // [[ X && Y ]]
			half := func(x syntax.TestExpr) *value.Value {
				return r.condition(&syntax.Stmt{Position: s.Position, Cmd: &syntax.TestClause{Left: c.Left, Right: c.Right, X: x}})
			}
			return joined(half(b.X), half(b.Y), b.Op == syntax.AndTest, at), not
		}
		for {
			u, ok := x.(*syntax.UnaryTest)
			if !ok || u.Op != syntax.TsNot {
				break
			}
			x, not = u.X, !not
		}
		for {
			p, ok := x.(*syntax.ParenTest)
			if !ok {
				break
			}
			return r.condition(&syntax.Stmt{Position: s.Position, Cmd: &syntax.TestClause{Left: c.Left, Right: c.Right, X: p.X}}), not
		}
		switch x := x.(type) {
		case *syntax.Word:
			return empty(x), !not
		case *syntax.UnaryTest:
			if w, ok := x.X.(*syntax.Word); ok && r.there(x.Op.String(), w) {
				return value.Yes(r.o.span(c.Pos(), c.End())), not
			} else if ok && r.missing(x.Op.String(), w) {
				return value.Yes(r.o.span(c.Pos(), c.End())), !not
			} else if ok && x.Op == syntax.TsVarSet && syntax.ValidName(w.Lit()) {
				if _, set := r.vars[w.Lit()]; set && !r.absent[w.Lit()] {
					return value.Yes(at), not
				} else if !set && r.gone == "" {
					return value.IsSet(w.Lit(), at), not
				}
			} else if ok && x.Op == syntax.TsEmpStr {
				return empty(w), not
			} else if ok && x.Op == syntax.TsNempStr {
				return empty(w), !not
			}
		case *syntax.BinaryTest:
			a, ok := x.X.(*syntax.Word)
			b, ok2 := x.Y.(*syntax.Word)
			if !ok || !ok2 {
				break
			}
			switch x.Op {
			case syntax.TsReMatch:
				if p := r.word(b); p.Literal() {
					return value.Shell("regex", at, r.word(a).Value, value.Text(ere(b, p.Text), p.At)), not
				}
				return nil, false
			case syntax.TsMatch, syntax.TsMatchShort, syntax.TsNoMatch:
				if p := r.pattern(b); p.Kind == value.Str && strings.ContainsAny(p.Text, `*?[\`) {
					return value.Shell("glob", at, r.word(a).Value, p), not != (x.Op == syntax.TsNoMatch)
				}
			}
			if name := numeric[x.Op.String()]; name != "" {
				return value.Compared(name, r.word(a).Value, r.word(b).Value, at), not
			}
			switch x.Op {
			case syntax.TsMatch, syntax.TsMatchShort:
				return same(r.word(a).Value, r.word(b).Value), not
			case syntax.TsNoMatch:
				return same(r.word(a).Value, r.word(b).Value), !not
			}
		}
	}
	return nil, false
}

// numeric are the comparisons of whole numbers.
var numeric = map[string]string{"-gt": ">", "-lt": "<", "-ge": ">=", "-le": "<="}

// ere is a regular expression as it stands in a script: what is escaped stays so.
func ere(w *syntax.Word, text string) string {
	if l := w.Lit(); l != "" {
		return l
	}
	return text
}

// condition is whether a test holds; nil where that cannot be told.
func (r *lineReader) condition(s *syntax.Stmt) *value.Value {
	v, not := r.test(s)
	if v != nil && not {
		return value.Not(v)
	}
	return v
}

// joined are two tests with && or || between them; nil where neither can be told.
func joined(a, b *value.Value, both bool, at place.Span) *value.Value {
	if a == nil || b == nil {
		return nil
	}
	if both {
		return value.Both(a, b, at)
	}
	return value.AnyOf(a, b, at)
}

// runs says whether a command runs in an environment, by what it stands under;
// ok is false where that cannot be told.
func (s Simple) runs(env *value.Environ) (yes, ok bool) {
	ok = true
	for _, t := range s.Tests {
		in := env
		if t.On != nil && len(t.On.Variables()) == 0 {
			in = &value.Environ{}
		}
		if t.On == nil || in == nil {
			ok = false
			continue
		}
		holds, known := t.On.Under(*in).Truth(false)
		switch {
		case !known:
			ok = false
		case holds == t.Not:
			return false, true
		}
	}
	return true, ok
}

// takesOver reports whether a command is the last of its script: exec puts the
// program in the place of the shell (POSIX.1-2024, "exec").
func (s Simple) takesOver() bool {
	return len(s.Words) > 1 && s.Words[0].Text == "exec" && !strings.HasPrefix(s.Words[1].Text, "-")
}

// alternatives reports whether of two commands only one can run: they part at
// a branch. Two branches that are not one in the other may belong to different
// conditions; then too which one runs last cannot be told.
func alternatives(a, b []int) bool {
	for i := range min(len(a), len(b)) {
		if a[i] != b[i] {
			return true
		}
	}
	return false
}

// stays reports whether a program is a server or may be one, and not a step
// on the way, such as a migration.
func (f Final) stays() bool {
	k := f.Known
	if k == nil || f.Reason != "" {
		return false
	}
	if k.Server != "" || k.Dev != "" || k.Watch != "" {
		return true
	}
	w, ok := f.Target()
	if !ok {
		return false
	}
	return path.Base(w.Text) != "manage.py" || index(f.Args, "runserver") >= 0
}
