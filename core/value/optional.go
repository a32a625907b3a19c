package value

import "ubique/core/code"

// A chain is cut short where it stands on nothing: all that follows in
// JavaScript, C# and PHP (ECMA-262 13.3.9; C# reference, "Member access
// operators"; PHP 8.4 "Nullsafe operator"), the one step in Ruby, Kotlin and
// Groovy.
const maxChain = 12

// guard gives the expression whose being nothing makes n nothing: what stands
// before the last ?. of its chain; nil where there is none.
func guard(n *code.Node, l code.Language) *code.Node {
	short := javascript(l) || l == code.CSharp || l == code.PHP
	for range maxChain {
		switch {
		case !n.Is(code.Call) && !n.Is(code.Member) && !n.Is(code.Index):
			return nil
		case n.Flag&code.OptionalOp != 0:
			return n.Kid(0)
		case !short && !(n.Is(code.Call) && n.Kid(0).Is(code.Member) && n.Kid(0).Flag&code.OptionalOp != 0):
			return nil
		}
		n = n.Kid(0)
	}
	return nil
}

// optional is v, the value of n, or nothing where its chain is cut short.
func (e *Eval) optional(n *code.Node, v *Value, s *code.Scope, c *context) *Value {
	if n == e.calling {
		return v
	}
	g := guard(n, s.File.Lang)
	if g == nil {
		return v
	}
	at := s.File.At(n)
	switch base := e.expr(g, s, c); base.Kind {
	case Undef, Null:
		return &Value{Kind: base.Kind, At: at}
	case Env, Op, Cond:
		none := &Value{Kind: Null, At: at}
		if javascript(s.File.Lang) {
			none.Kind = Undef
		}
		return &Value{Kind: Cond, Py: v.Py, At: at, Kids: []*Value{missing(base, at), none, v}, Steps: v.Steps}
	}
	return v
}
