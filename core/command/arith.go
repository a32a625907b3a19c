package command

import (
	"math"
	"strconv"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/value"
)

// Arithmetic of the shell, where the environment says what is in it (POSIX.1-2024, "2.6.4
// Arithmetic Expansion"; GNU Bash 5.3 manual, "Shell Arithmetic").

// number is the number that a text is in arithmetic: 10, 0x1f, 017, 2#101, or nothing.
func number(text string) (int, bool) {
	text = strings.TrimSpace(text)
	if text == "" {
		return 0, true
	}
	base, digits, based := strings.Cut(text, "#")
	if based {
		b, err := strconv.Atoi(base)
		n, bad := strconv.ParseInt(digits, b, 64)
		return int(n), err == nil && b >= 2 && b <= 36 && bad == nil
	}
	if len(text) > 1 && text[0] == '0' && strings.Trim(text, "01234567") == "" {
		n, err := strconv.ParseInt(text, 8, 64)
		return int(n), err == nil
	}
	n, err := strconv.ParseInt(text, 0, 64)
	return int(n), err == nil && !strings.ContainsAny(text, "_bBoO")
}

// variable is what a variable of the script or of the environment holds; ok is false where
// that is not known.
func (r *lineReader) variable(name string) (string, bool) {
	if v, set := r.vars[name]; set {
		return r.known(v)
	}
	if a := r.argument(name, r.o.at); a != nil {
		return r.known(a)
	}
	if r.with == nil || r.gone != "" && !has(*r.with, name) {
		return "", false
	}
	return r.known(value.Variable(name, value.ReadsEmpty, r.o.at))
}

// compute works out an expression, with what it sets; ok is false where something in it is
// not known.
func (r *lineReader) compute(x syntax.ArithmExpr, depth int) (n int, ok bool) {
	if depth > 32 {
		return 0, false
	}
	of := func(x syntax.ArithmExpr) (int, bool) { return r.compute(x, depth+1) }
	truth := func(yes bool) (int, bool) {
		if yes {
			return 1, true
		}
		return 0, true
	}
	switch x := x.(type) {
	case *syntax.ParenArithm:
		return of(x.X)
	case *syntax.Word:
		text := x.Lit()
		if text != "" && !syntax.ValidName(text) {
			return number(text)
		}
		if text != "" {
			t, ok := r.variable(text)
			if !ok {
				return 0, false
			}
			if syntax.ValidName(strings.TrimSpace(t)) { // the name of another
				if t, ok = r.variable(strings.TrimSpace(t)); !ok {
					return 0, false
				}
			}
			return number(t)
		}
		v, _, _ := r.parts(x.Parts, r.o.at)
		t, ok := r.known(v)
		if !ok {
			return 0, false
		}
		return number(t)
	case *syntax.UnaryArithm:
		if x.Op == syntax.Inc || x.Op == syntax.Dec {
			w, isWord := x.X.(*syntax.Word)
			old, ok := of(x.X)
			if !isWord || !ok || !syntax.ValidName(w.Lit()) {
				return 0, false
			}
			now := old + 1
			if x.Op == syntax.Dec {
				now = old - 1
			}
			r.set(w.Lit(), value.Text(strconv.Itoa(now), r.o.at))
			if x.Post {
				return old, true
			}
			return now, true
		}
		n, ok := of(x.X)
		switch x.Op {
		case syntax.Plus:
			return n, ok
		case syntax.Minus:
			return -n, ok
		case syntax.BitNegation:
			return ^n, ok
		case syntax.Not:
			if !ok {
				return 0, false
			}
			return truth(n == 0)
		}
		return 0, false
	case *syntax.BinaryArithm:
		return r.binary(x, of, truth)
	}
	return 0, false
}

// assigning are the operators that set a variable, and what they do with it.
var assigning = map[syntax.BinAritOperator]syntax.BinAritOperator{syntax.Assgn: 0, syntax.AddAssgn: syntax.Add, syntax.SubAssgn: syntax.Sub, syntax.MulAssgn: syntax.Mul, syntax.QuoAssgn: syntax.Quo, syntax.RemAssgn: syntax.Rem,
	syntax.AndAssgn: syntax.And, syntax.OrAssgn: syntax.Or, syntax.XorAssgn: syntax.Xor, syntax.ShlAssgn: syntax.Shl, syntax.ShrAssgn: syntax.Shr}

func (r *lineReader) binary(x *syntax.BinaryArithm, of func(syntax.ArithmExpr) (int, bool), truth func(bool) (int, bool)) (int, bool) {
	if op, sets := assigning[x.Op]; sets {
		w, isWord := x.X.(*syntax.Word)
		if !isWord || !syntax.ValidName(w.Lit()) {
			return 0, false
		}
		n, ok := of(x.Y)
		if ok && op != 0 {
			var old int
			if old, ok = of(x.X); ok {
				n, ok = calculated(op, old, n)
			}
		}
		if ok {
			r.set(w.Lit(), value.Text(strconv.Itoa(n), r.o.at))
		}
		return n, ok
	}
	a, ok := of(x.X)
	if !ok {
		return 0, false
	}
	switch x.Op {
	case syntax.AndArit, syntax.OrArit:
		if (a != 0) == (x.Op == syntax.OrArit) {
			return truth(a != 0)
		}
		b, ok := of(x.Y)
		if !ok {
			return 0, false
		}
		return truth(b != 0)
	case syntax.TernQuest:
		arms, isArms := x.Y.(*syntax.BinaryArithm)
		if !isArms || arms.Op != syntax.TernColon {
			return 0, false
		}
		if a != 0 {
			return of(arms.X)
		}
		return of(arms.Y)
	}
	b, ok := of(x.Y)
	if !ok {
		return 0, false
	}
	switch x.Op {
	case syntax.Comma:
		return b, true
	case syntax.Eql:
		return truth(a == b)
	case syntax.Neq:
		return truth(a != b)
	case syntax.Lss:
		return truth(a < b)
	case syntax.Gtr:
		return truth(a > b)
	case syntax.Leq:
		return truth(a <= b)
	case syntax.Geq:
		return truth(a >= b)
	}
	return calculated(x.Op, a, b)
}

// calculated is what an operator makes of two numbers.
func calculated(op syntax.BinAritOperator, a, b int) (int, bool) {
	switch op {
	case syntax.Add:
		return a + b, true
	case syntax.Sub:
		return a - b, true
	case syntax.Mul:
		return a * b, true
	case syntax.Quo:
		if b != 0 {
			return a / b, true
		}
	case syntax.Rem:
		if b != 0 {
			return a % b, true
		}
	case syntax.Pow:
		if p := math.Pow(float64(a), float64(b)); b >= 0 && math.Abs(p) < 1<<53 {
			return int(p), true
		}
	case syntax.And:
		return a & b, true
	case syntax.Or:
		return a | b, true
	case syntax.Xor:
		return a ^ b, true
	case syntax.Shl:
		if b >= 0 && b < 63 {
			return a << b, true
		}
	case syntax.Shr:
		if b >= 0 && b < 63 {
			return a >> b, true
		}
	}
	return 0, false
}

// reckons runs an expression as a command: what it may have set is not known where it could
// not be worked out. The number is nil then.
func (r *lineReader) reckons(x syntax.ArithmExpr) *int {
	if x == nil {
		one := 1
		return &one
	}
	if n, ok := r.compute(x, 0); ok {
		return &n
	}
	r.loses(x)
	return nil
}

// targets are the variables that expressions in code set.
func targets(in syntax.Node) (list []string) {
	syntax.Walk(in, func(n syntax.Node) bool {
		var w *syntax.Word
		switch n := n.(type) {
		case *syntax.BinaryArithm:
			if _, sets := assigning[n.Op]; sets {
				w, _ = n.X.(*syntax.Word)
			}
		case *syntax.UnaryArithm:
			if n.Op == syntax.Inc || n.Op == syntax.Dec {
				w, _ = n.X.(*syntax.Word)
			}
		}
		if w != nil && syntax.ValidName(w.Lit()) {
			list = append(list, w.Lit())
		}
		return true
	})
	return list
}

// sets reports whether a command sets a variable by arithmetic: as a test it must not be
// looked at twice.
func sets(c syntax.Command) bool { return len(targets(c)) > 0 }

// loses notes that what expressions set is not known.
func (r *lineReader) loses(list ...syntax.ArithmExpr) {
	for _, x := range list {
		if x == nil {
			continue
		}
		for _, name := range targets(x) {
			r.set(name, value.NotKnown("a computed number", r.o.at))
		}
	}
}

// reckoned is a computed number as a value.
func (r *lineReader) reckoned(x syntax.ArithmExpr, at place.Span) *value.Value {
	if v := r.arithmetic(x, at); v != nil && len(v.Variables()) > 0 { // the environment decides, and it may be another
		return value.Concat(value.Text("", at), v)
	}
	if n := r.reckons(x); n != nil {
		return value.Text(strconv.Itoa(*n), at)
	}
	return value.NotKnown("a computed number", at)
}

// counted reads a loop that counts: for ((i = 0; i < n; i++)); false for one whose turns are
// not known.
func (r *lineReader) counted(c *syntax.CStyleLoop, do []*syntax.Stmt, guarded bool) bool {
	init := c.Init
	for range maxTurnsOfLoop {
		if len(r.within) > 0 || init != nil && r.reckons(init) == nil {
			break
		}
		init = nil
		holds := r.reckons(c.Cond)
		if holds == nil {
			break
		}
		if *holds == 0 || !r.turn(do, guarded) {
			return true
		}
		if r.reckons(c.Post) == nil {
			break
		}
	}
	r.loses(c.Init, c.Cond, c.Post)
	return false
}

// maxTurnsOfLoop is how many turns of a loop that counts are read.
const maxTurnsOfLoop = 64
