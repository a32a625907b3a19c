package rust

import "slices"

// maxExpanded limits how many tokens a macro makes.
const maxExpanded = 20_000

// bound is what a name of a rule stands for: tokens, or one of it for each turn.
type bound struct {
	toks  []token
	turns []map[string]bound
}

// Expand is what the macros of the tree make of what one is called with, as a block: of
// the first rule that takes it (The Rust Reference, "Macros By Example"). Nil where none
// does.
func (e *Expr) Expand(rules []Rule) (made *Expr) {
	defer func() {
		if r := recover(); r != nil {
			if _, ok := r.(fault); !ok {
				panic(r)
			}
			made = nil
		}
	}()
	for _, r := range rules {
		p := (&parser{}).within(e.Raw)
		names := map[string]bound{}
		if !takes(r.Takes, p, names) || p.cur().kind != tEnd {
			continue
		}
		q := &parser{}
		toks := q.put(r.Makes, names, nil)
		toks = append([]token{{kind: tPunct, text: "{"}}, append(toks, token{kind: tPunct, text: "}"})...)
		for i := range toks { // they stand where the macro is called
			toks[i].off, toks[i].end = e.Off, e.End
		}
		return q.within(toks).block()
	}
	return nil
}

// group is the stretch of tokens in the brackets that begin at a place: the end is
// behind them.
func group(toks []token, i int) (inner []token, end int) {
	depth := 0
	for j := i; j < len(toks); j++ {
		if toks[j].kind != tPunct {
			continue
		}
		switch toks[j].text {
		case "(", "[", "{":
			depth++
		case ")", "]", "}":
			if depth--; depth == 0 {
				return toks[i+1 : j], j + 1
			}
		}
	}
	return nil, len(toks)
}

func sign(toks []token, i int, text string) bool {
	return i < len(toks) && toks[i].kind == tPunct && toks[i].text == text
}

// repeated reads what stands behind the group of a repetition: what parts its turns, and
// how often it may be.
func repeated(toks []token, i int) (parts *token, times string, end int) {
	for n := 0; n < 2 && i < len(toks); n++ {
		t := toks[i]
		i++
		if t.kind == tPunct && (t.text == "*" || t.text == "+" || t.text == "?") {
			return parts, t.text, i
		}
		parts = &t
	}
	return nil, "", i
}

// takes holds what a rule takes against tokens, and keeps what its names stand for.
func takes(rule []token, p *parser, names map[string]bound) bool {
	p.down()
	defer p.up()
	for i := 0; i < len(rule); {
		switch {
		case sign(rule, i, "$") && sign(rule, i+1, "("):
			inner, end := group(rule, i+1)
			parts, times, end := repeated(rule, end)
			var turns []map[string]bound
			for len(turns) < 500 {
				at := p.i
				if len(turns) > 0 && parts != nil {
					if t := p.cur(); t.kind != parts.kind || t.text != parts.text {
						break
					}
					p.next()
				}
				in := map[string]bound{}
				if p.cur().kind == tEnd || !tries(inner, p, in) || p.i == at {
					p.i, p.split = at, 0
					break
				}
				turns = append(turns, in)
				if times == "?" {
					break
				}
			}
			if times == "+" && len(turns) == 0 {
				return false
			}
			for j := 0; j+2 < len(inner); j++ { // its names are known, even where they stand for nothing
				if sign(inner, j, "$") && inner[j+1].kind == tWord && sign(inner, j+2, ":") {
					names[inner[j+1].text] = bound{turns: turns}
				}
			}
			i = end
		case sign(rule, i, "$") && i+3 < len(rule) && rule[i+1].kind == tWord && sign(rule, i+2, ":"):
			at := p.i
			if p.cur().kind == tEnd || !fragment(rule[i+3].text, p) {
				return false
			}
			toks := slices.Clone(p.toks[at:p.i])
			if rule[i+3].text == "expr" && len(toks) > 1 {
				toks = append([]token{{kind: tPunct, text: "("}}, append(toks, token{kind: tPunct, text: ")"})...)
			}
			names[rule[i+1].text] = bound{toks: toks}
			i += 4
		default:
			t := p.cur()
			if t.kind != rule[i].kind || t.text != rule[i].text {
				return false
			}
			p.next()
			i++
		}
	}
	return true
}

// tries is takes where what cannot be read is no fault.
func tries(rule []token, p *parser, names map[string]bound) (ok bool) {
	depth := p.depth
	defer func() {
		if r := recover(); r != nil {
			if _, is := r.(fault); !is {
				panic(r)
			}
			p.depth, ok = depth, false
		}
	}()
	return takes(rule, p, names)
}

// fragment reads what a name of a rule may stand for.
func fragment(kind string, p *parser) bool {
	switch kind {
	case "expr":
		p.expr()
	case "ty", "path":
		p.typ()
	case "pat", "pat_param":
		p.pattern()
	case "block":
		p.block()
	case "stmt":
		p.statement()
	case "ident":
		if p.cur().kind != tWord {
			return false
		}
		p.next()
	case "literal":
		p.eat("-")
		if k := p.cur().kind; k != tNumber && k != tText && k != tChar && !p.isWord("true") && !p.isWord("false") {
			return false
		}
		p.next()
	case "lifetime":
		if p.cur().kind != tLifetime {
			return false
		}
		p.next()
	case "tt":
		if p.is("(") || p.is("[") || p.is("{") {
			p.skip()
		} else {
			p.next()
		}
	default:
		return false
	}
	return true
}

// put makes tokens of what a rule makes.
func (p *parser) put(makes []token, names map[string]bound, out []token) []token {
	p.down()
	defer p.up()
	for i := 0; i < len(makes); {
		if len(out) > maxExpanded {
			p.fail("a macro that makes too much")
		}
		switch {
		case sign(makes, i, "$") && sign(makes, i+1, "("):
			inner, end := group(makes, i+1)
			parts, _, end := repeated(makes, end)
			n := -1
			for j := 0; j+1 < len(inner); j++ {
				if b, ok := names[inner[j+1].text]; ok && sign(inner, j, "$") && b.toks == nil {
					n = max(n, len(b.turns))
				}
			}
			for k := range max(n, 0) {
				if k > 0 && parts != nil {
					out = append(out, *parts)
				}
				in := map[string]bound{}
				for name, b := range names {
					in[name] = b
					if b.toks == nil && k < len(b.turns) {
						in[name] = b.turns[k][name]
					}
				}
				out = p.put(inner, in, out)
			}
			i = end
		case sign(makes, i, "$") && i+1 < len(makes) && makes[i+1].kind == tWord:
			if makes[i+1].text == "crate" {
				out = append(out, makes[i+1])
			} else if b, ok := names[makes[i+1].text]; ok {
				out = append(out, b.toks...)
			}
			i += 2
		default:
			out = append(out, makes[i])
			i++
		}
	}
	return out
}
