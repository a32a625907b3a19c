package value

import "ubique/core/code"

// rubyCall evaluates ENV.fetch and conversions of Ruby (documentation of its
// core classes, Ruby 3.4); nil for any other call.
func (e *Eval) rubyCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if callee.Is(code.Name) && (callee.Name == "Integer" || callee.Name == "String") && len(n.Kids) == 2 {
		return op(map[string]string{"Integer": "int", "String": "String"}[callee.Name], true, at, e.expr(n.Kids[1], s, c))
	}
	if !callee.Is(code.Member) {
		return nil
	}
	if callee.Name == "fetch" && callee.Kid(0).Is(code.Name) && callee.Kids[0].Name == "ENV" && n.Kid(1) != nil {
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

// rubyConversion evaluates x.to_i and its like, which need no parentheses: what
// is no number gives 0.
func (e *Eval) rubyConversion(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	switch n.Name {
	case "to_i":
		return op("||", false, at, op("parseInt", false, at, e.expr(n.Kid(0), s, c)), number(0, at))
	case "to_s":
		return op("String", true, at, e.expr(n.Kid(0), s, c))
	case "strip":
		return op("strip", true, at, e.expr(n.Kid(0), s, c))
	case "downcase":
		return op("lower", true, at, e.expr(n.Kid(0), s, c))
	}
	return nil
}
