package code

// Patterns of Ruby, as they stand behind `in` and `=>` (Ruby 3.4, "Pattern matching"). A
// name is bound; `^x` compares; a list is an Array, a hash an Object whose pairs have no
// value where the key is the name; `P => x` is a Bind of x; `A | B` is a Binary; a class
// with parentheses is a Call.

// Fits is the name of the test that a subject fits a pattern of Ruby.
const Fits = "fits"

// matching reads a whole pattern: a list or a hash may stand without its signs.
func (r *loose) matching() *Node {
	saved := r.noIn
	r.noIn = true
	defer func() { r.noIn = saved }()
	off := r.cur().off
	if r.keyed() {
		o := &Node{Kind: Object, Off: off}
		r.keyedPatterns(o, "")
		return r.done(o)
	}
	p := r.pattern()
	if p == nil || !r.isP(",") && !p.Is(Spread) {
		return p
	}
	list := &Node{Kind: Array, Off: off, Kids: []*Node{p}}
	for r.eatP(",") {
		if r.isN("then") || r.cur().nl { // a comma at the end takes the rest
			list.Kids = append(list.Kids, &Node{Kind: Spread, Off: r.end(), End: r.end()})
			break
		}
		k := r.pattern()
		if k == nil {
			break
		}
		list.Kids = append(list.Kids, k)
	}
	return r.done(list)
}

// keyed reports whether a key of a hash comes.
func (r *loose) keyed() bool {
	t, next := r.cur(), r.at(1)
	return (t.kind == tName || t.kind == tString) && next.kind == tPunct && next.text == ":" && next.off == t.end || t.kind == tPunct && t.text == "**"
}

// keyedPatterns reads the entries of a hash up to a sign, or to where they end.
func (r *loose) keyedPatterns(o *Node, closing string) {
	for r.cur().kind != tEOF && !(closing != "" && r.isP(closing)) {
		t := r.cur()
		if !r.keyed() {
			break
		}
		if r.eatP("**") {
			s := &Node{Kind: Spread, Off: t.off}
			if n := r.cur(); n.kind == tName {
				r.pos++
				s.Kids = []*Node{{Kind: Name, Name: n.text, Off: n.off, End: n.end}}
			}
			o.Kids = append(o.Kids, r.done(s))
		} else {
			r.pos += 2
			p := &Node{Kind: Pair, Name: t.text, Flag: Symbol, Off: t.off}
			if x := r.cur(); !(x.kind == tPunct && (x.text == "," || x.text == closing) || x.nl && closing == "" || r.isN("then") || r.isN("if") || r.isN("unless") || x.kind == tEOF) {
				if v := r.pattern(); v != nil {
					p.Kids = []*Node{v}
				}
			}
			o.Kids = append(o.Kids, r.done(p))
		}
		if !r.eatP(",") {
			break
		}
	}
}

// pattern reads one pattern with its alternatives and its name.
func (r *loose) pattern() *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	p := r.patternPart()
	for p != nil && r.isP("|") {
		r.pos++
		q := r.patternPart()
		if q == nil {
			break
		}
		p = r.done(&Node{Kind: Binary, Name: "|", Off: p.Off, Kids: []*Node{p, q}})
	}
	for p != nil && r.isP("=>") && r.at(1).kind == tName {
		r.pos++
		t := r.cur()
		r.pos++
		p = r.done(&Node{Kind: Bind, Off: p.Off, Kids: []*Node{{Kind: Name, Name: t.text, Off: t.off, End: t.end}, p}})
	}
	return p
}

func (r *loose) patternPart() *Node {
	t := r.cur()
	off := t.off
	inside := func(closing string, n *Node) *Node {
		for r.cur().kind != tEOF && !r.isP(closing) {
			start := r.pos
			if r.keyed() {
				n.Kind = Object
				r.keyedPatterns(n, closing)
			} else if k := r.pattern(); k != nil {
				n.Kids = append(n.Kids, k)
			}
			r.eatP(",")
			if r.pos == start {
				r.pos++
			}
		}
		r.eatP(closing)
		return r.done(n)
	}
	switch {
	case t.kind == tPunct && t.text == "*":
		r.pos++
		s := &Node{Kind: Spread, Off: off}
		if n := r.cur(); n.kind == tName && !n.nl && n.text != "then" {
			r.pos++
			s.Kids = []*Node{{Kind: Name, Name: n.text, Off: n.off, End: n.end}}
		}
		return r.done(s)
	case t.kind == tPunct && t.text == "[":
		r.pos++
		return inside("]", &Node{Kind: Array, Off: off})
	case t.kind == tPunct && t.text == "{":
		r.pos++
		n := inside("}", &Node{Kind: Object, Off: off})
		n.Kind = Object
		return n
	case t.kind == tPunct && t.text == "(":
		r.pos++
		p := r.pattern()
		r.eatP(")")
		return p
	case t.kind == tPunct && t.text == "^":
		r.pos++
		v := r.expr(binds["|"])
		if v == nil {
			return nil
		}
		return r.done(&Node{Kind: Unary, Name: "^", Off: off, Kids: []*Node{v}})
	case t.kind == tName && t.text != "" && (t.text[0] >= 'a' && t.text[0] <= 'z' || t.text[0] == '_') && t.text != "nil" && t.text != "true" && t.text != "false" && t.text != "self":
		r.pos++
		return &Node{Kind: Name, Name: t.text, Off: off, End: t.end}
	case t.kind == tName && t.text != "" && t.text[0] >= 'A' && t.text[0] <= 'Z':
		c := r.dotted()
		if c == nil {
			return nil
		}
		for _, s := range []string{"()", "[]"} {
			if r.isP(s[:1]) && r.glued() {
				r.pos++
				parts := inside(s[1:], &Node{Kind: Array, Off: off})
				return r.done(&Node{Kind: Call, Off: off, Kids: []*Node{c, parts}})
			}
		}
		return c
	}
	v := r.expr(binds["|"]) // what binds stronger than the sign of alternatives
	for v != nil && (r.isP("..") || r.isP("...")) {
		name := r.cur().text
		r.pos++
		end := &Node{Kind: Null, Off: r.end(), End: r.end()}
		if x := r.cur(); !x.nl && (x.kind == tNumber || x.kind == tString || x.kind == tPunct && x.text == "-") {
			if e := r.expr(binds["|"]); e != nil {
				end = e
			}
		}
		v = r.done(&Node{Kind: Binary, Name: name, Off: v.Off, Kids: []*Node{v, end}})
	}
	return v
}

// matched is the test that a subject fits the pattern that comes, with the condition that
// may stand behind it.
func (r *loose) matched(subject *Node) *Node {
	off := r.cur().off
	p := r.matching()
	if p == nil || subject == nil {
		return &Node{Kind: Unknown, Off: off, End: r.end()}
	}
	test := r.done(&Node{Kind: Binary, Name: Fits, Off: off, Kids: []*Node{subject, p}})
	if not := r.isN("unless"); (not || r.isN("if")) && !r.cur().nl {
		r.pos++
		on := r.expr(0)
		if on == nil {
			on = &Node{Kind: Unknown, Off: r.end(), End: r.end()}
		}
		if not {
			on = &Node{Kind: Unary, Name: "!", Off: on.Off, End: on.End, Kids: []*Node{on}}
		}
		test = r.done(&Node{Kind: Binary, Name: "&&", Off: off, Kids: []*Node{test, on}})
	}
	return test
}

// unmatched is what happens where nothing fits: an error is raised.
func (r *loose) unmatched() *Node {
	at := r.end()
	class := &Node{Kind: Name, Name: "NoMatchingPatternError", Off: at, End: at}
	return &Node{Kind: Block, Off: at, End: at, Kids: []*Node{{Kind: Throw, Off: at, End: at, Kids: []*Node{class}}}}
}
