package code

import (
	"slices"
	"strconv"
	"strings"
)

// binds says how strongly an operator binds; a higher number binds stronger.
var binds = map[string]int{
	"|>": 3, "??": 4, "||": 5, "or": 2, "xor": 2, "&&": 6, "and": 2, "==": 7, "!=": 7, "===": 7, "!==": 7, "=~": 7, "!~": 7, "==~": 7, "<=>": 7, "<": 8, ">": 8, "<=": 8, ">=": 8, "instanceof": 8, "is": 8, "in": 8, "as": 16,
	"..": 9, "...": 9, "..=": 9, "..<": 9, "|": 10, "^": 11, "&": 12, "<<": 13, ">>": 13, "+": 14, ".+": 14, "-": 14, "*": 15, "/": 15, "%": 15, "**": 17, "to": 9, "until": 9, "step": 9,
}

// expr reads an expression whose operators bind more strongly than least.
func (r *loose) expr(least int) *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	left := r.prefix()
	if left == nil {
		return nil
	}
	for {
		t := r.cur()
		if t.kind == tEOF {
			return left
		}
		if t.kind != tPunct && t.kind != tName {
			return left
		}
		if t.nl && r.lines() && !(t.kind == tPunct && (t.text == "|>" || t.text == "." || t.text == "&&" || t.text == "||" || t.text == "??" || t.text == "+" && r.lang != Kotlin)) {
			return left
		}
		if t.kind == tName {
			switch t.text {
			case "as":
				if r.lang == PHP { // foreach (list as name)
					return left
				}
			case "xor":
				if r.lang != PHP {
					return left
				}
			case "or", "and", "instanceof", "is", "to", "until", "step":
				if (t.text == "to" || t.text == "until" || t.text == "step") && r.lang != Kotlin || t.text == "until" && r.lang == Ruby {
					return left
				}
			case "in":
				if r.noIn || r.lang != Kotlin && r.lang != Elixir {
					return left
				}
			default:
				return left
			}
		}
		if t.kind == tPunct && t.text == "?" {
			if r.lang == Rust {
				r.pos++
				left = r.postfix(left)
				continue
			}
			if least > 3 || r.lang == Kotlin {
				return left
			}
			r.pos++
			yes := r.assigned(r.expr(1))
			var no *Node
			if r.eatP(":") {
				no = r.assigned(r.expr(1))
			}
			left = r.done(&Node{Kind: Cond, Off: left.Off, Kids: []*Node{left, yes, no}})
			continue
		}
		p := binds[t.text]
		if t.text == "||" && (r.lang == PHP || r.lang == Groovy) && r.src[t.off] == '?' { // ?: binds as weakly as a condition does
			p = 3
		}
		shift := 0 // further tokens of >> and >>>, which close types where they stand apart
		if t.kind == tPunct && t.text == ">" && r.lang == Java {
			for k := r.at(shift + 1); shift < 2 && k.kind == tPunct && k.text == ">" && k.off == t.off+int32(shift)+1; k = r.at(shift + 1) {
				shift++
			}
			if shift > 0 {
				p = binds[">>"]
			}
		}
		if p == 0 || p <= least {
			return left
		}
		if t.text == "<" && r.lang != Ruby && r.lang != Elixir && r.lang != PHP && r.typeArguments() {
			left = r.postfix(left)
			continue
		}
		if t.text == "|" && r.lang == Elixir {
			return left
		}
		r.pos += 1 + shift
		if t.text == "is" && r.lang == CSharp {
			left = r.patterned(left)
			continue
		}
		if t.text == "as" || t.text == "is" || t.text == "instanceof" { // a type follows
			if r.eatP("!") || r.eatP("?") {
			}
			var typ *Node
			if r.cur().kind == tName {
				typ = r.dotted()
			}
			if t.text == "as" {
				continue
			}
			if t.text == "instanceof" && r.keepsJumps() && typ != nil {
				left = r.done(&Node{Kind: Binary, Name: t.text, Off: left.Off, Kids: []*Node{left, typ}})
				if x := r.cur(); r.lang == Java && x.kind == tName && !x.nl {
					left.Alias = x.text
					r.pos++
				}
				continue
			}
			left = r.done(&Node{Kind: Unknown, Off: left.Off, Kids: []*Node{left}})
			continue
		}
		right := r.expr(p)
		if right == nil && r.lang == Ruby && (t.text == ".." || t.text == "...") { // without an end
			right = &Node{Kind: Null, Off: r.end(), End: r.end()}
		}
		if right == nil {
			return left
		}
		if p <= binds["&&"] {
			right = r.assigned(right) // x or y = z
		}
		name := map[string]string{"or": "||", "and": "&&"}[t.text]
		if name == "" {
			name = t.text + strings.Repeat(">", shift)
		}
		if name == "|>" && right.Is(Call) { // a |> f(b) is f(a, b)
			kids := append([]*Node{right.Kids[0], left}, right.Kids[1:]...)
			left = r.done(&Node{Kind: Call, Off: left.Off, Kids: kids})
			continue
		}
		left = r.done(&Node{Kind: Binary, Name: name, Off: left.Off, Kids: []*Node{left, right}})
		if r.lang == PHP && name == "||" && r.src[t.off] == '?' {
			left.Alias = Elvis
		}
	}
}

// assigned goes on with an assignment where an expression was read that can be
// set, in languages in which that is an expression too.
func (r *loose) assigned(e *Node) *Node {
	if t := r.cur(); r.keepsJumps() && (e.Is(Name) || e.Is(Member) || e.Is(Index)) && t.kind == tPunct && assigning[t.text] && r.enter() {
		r.pos++
		if v := r.assigned(r.expr(0)); v != nil {
			e = r.done(&Node{Kind: Assign, Name: t.text, Off: e.Off, Kids: []*Node{e, v}})
		}
		r.leave()
	}
	return e
}

// typeArguments steps over <T> where a call or a member follows.
func (r *loose) typeArguments() bool {
	start := r.pos
	if r.generics() && (r.isP("(") || r.isP(".") || r.isP("{")) {
		return true
	}
	r.pos = start
	return false
}

func (r *loose) prefix() *Node {
	t := r.cur()
	n := &Node{Off: t.off}
	switch t.kind {
	case tNumber:
		r.pos++
		n.Kind, n.Name = Number, number(t.text, r.lang)
		return r.postfix(r.done(n))
	case tString:
		r.pos++
		n.Kind, n.Name = String, t.text
		n.Flag = r.symbolic(t)
		if r.lang == Ruby && n.Flag == 0 && r.quoteNext(t) {
			return r.postfix(r.joinedTexts(n))
		}
		// "key": value, in a call or a map
		return r.postfix(r.done(n))
	case tTemplate:
		r.pos++
		n.Kind = Template
		n.Kids = r.pieces(t)
		if r.lang == Ruby && r.quoteNext(t) {
			return r.postfix(r.joinedTexts(n))
		}
		return r.postfix(r.done(n))
	case tRegex:
		r.pos++
		n.Name = Pattern + string(r.src[t.off:t.end])
		return r.postfix(r.done(n))
	case tPunct:
		switch t.text {
		case "!", "-", "+", "&", "*", "~", "++", "--", "&&", "!!", "@", "^", "**", "...", "..":
			if d := r.at(1); r.lang == Ruby && t.text == "-" && d.kind == tNumber && d.off == t.end { // the sign is the number's
				if e := r.at(2); !(e.kind == tPunct && e.text == "**") {
					r.pos += 2
					num := &Node{Kind: Number, Name: d.text, Off: d.off, End: d.end}
					return r.postfix(r.done(&Node{Kind: Unary, Name: "-", Off: t.off, Kids: []*Node{num}}))
				}
			}
			r.pos++
			lent := r.lang == Rust && t.text == "&" && r.at(1).kind == tName && r.eatN("mut")
			least := 15
			if (r.lang == Ruby || r.lang == PHP) && (t.text == "*" || t.text == "...") { // all that follows is given apart
				least = 3
			}
			e := r.expr(least)
			if e == nil {
				return nil
			}
			switch t.text {
			case "-", "!":
				n.Kind, n.Name, n.Kids = Unary, t.text, []*Node{e}
				return r.done(n)
			case "&":
				if r.lang == Ruby || r.lang == PHP || lent && e.Is(Name) { // a block; a variable itself
					e.Flag |= Address
				}
			case "~":
				if r.keepsJumps() {
					n.Kind, n.Name, n.Kids = Unary, t.text, []*Node{e}
					return r.done(n)
				}
			case "++", "--":
				if r.lang == Java || r.lang == PHP {
					n.Kind, n.Name, n.Kids = Unary, t.text, []*Node{e}
					return r.done(n)
				}
			case "*", "**", "...":
				if r.lang == Ruby || r.lang == PHP || r.lang == Kotlin {
					n.Kind, n.Kids = Spread, []*Node{e}
					if t.text == "**" && r.lang == Ruby {
						n.Name = "**"
					}
					return r.done(n)
				}
			}
			return e
		case "->": // a lambda of Ruby
			r.pos++
			ps := r.params()
			if ps == nil {
				ps = &Node{Kind: Params, Off: t.off, End: t.off}
			}
			return r.postfix(r.done(&Node{Kind: Func, Off: t.off, Kids: []*Node{ps, r.block1()}}))
		case "|", "||": // a closure of Rust
			if r.lang == Rust {
				r.pos++
				ps := &Node{Kind: Params, Off: t.off}
				for t.text == "|" && !r.isP("|") && r.cur().kind != tEOF {
					if r.isP(":") { // its type
						for !r.isP(",") && !r.isP("|") && r.cur().kind != tEOF {
							r.pos++
						}
						continue
					}
					if r.cur().kind == tName && !r.isN("mut") {
						ps.Kids = append(ps.Kids, &Node{Kind: Param, Name: r.cur().text, Off: r.cur().off, End: r.cur().end, Kids: []*Node{nil, nil}})
					}
					r.pos++
				}
				r.eatP("|")
				return r.closure(t.off, r.done(ps))
			}
			return nil
		case "(":
			if f := r.arrow(); f != nil {
				return f
			}
			r.pos++
			saved, do := r.noIn, r.noDo
			r.noIn, r.noDo = false, false
			var list []*Node
			commas := false
			for !r.isP(")") && r.cur().kind != tEOF {
				start := r.pos
				if s := r.stmt(); s != nil {
					if s.Is(ExprStmt) {
						s = s.Kids[0]
					} else if s.Is(Bind) && s.Kid(0).Is(Name) { // if (($p = f()) !== false)
						s.Kind, s.Name = Assign, "="
					}
					list = append(list, s)
				}
				commas = r.eatP(",") || commas
				if r.pos == start {
					r.pos++
				}
			}
			r.noIn, r.noDo = saved, do
			r.eatP(")")
			if len(list) == 1 && list[0] != nil {
				// (int) x: a cast
				if c := r.cur(); r.lang == PHP && list[0].Is(Name) && casts[strings.ToLower(list[0].Name)] && (c.kind != tPunct || strings.Contains("[(-+!@~&", c.text)) {
					e := r.expr(15)
					return r.done(&Node{Kind: Call, Off: t.off, Kids: []*Node{list[0], e}})
				} else if list[0].Is(Name) && !c.nl && (c.kind == tName && !r.words() || c.kind == tString || c.kind == tNumber || c.kind == tPunct && c.text == "(") && (r.lang == Java || r.lang == CSharp || r.lang == PHP) {
					e := r.expr(15)
					return r.done(&Node{Kind: Call, Off: t.off, Kids: []*Node{list[0], e}})
				}
				return r.postfix(list[0])
			}
			n.Kind, n.Kids = Array, list
			if r.lang == Ruby && !commas && len(list) > 1 { // statements, one after another
				n.Name = LastOf
			}
			return r.postfix(r.done(n))
		case "[":
			r.pos++
			n.Kind = Array
			r.items(n, "]")
			return r.postfix(r.done(n))
		case "{":
			if r.lang == Java { // the elements of an array
				r.pos++
				n.Kind = Array
				r.items(n, "}")
				return r.postfix(r.done(n))
			}
			if r.lang == Ruby || r.lang == PHP || r.lang == Elixir {
				r.pos++
				n.Kind = Object
				if r.lang == Elixir {
					n.Kind = Array
				}
				r.items(n, "}")
				return r.postfix(r.done(n))
			}
			return r.lambda()
		case "%":
			if r.lang == Elixir {
				r.pos++
				if r.cur().kind == tName {
					r.dotted()
				}
				if r.eatP("{") {
					n.Kind = Object
					r.items(n, "}")
					return r.postfix(r.done(n))
				}
			}
			return nil
		case ".":
			if r.lang == Rust || r.lang == PHP || r.lang == Ruby || r.lang == CSharp { // ::name
				r.pos++
				return r.prefix()
			}
		}
		return nil
	case tName:
		return r.named()
	}
	return nil
}

// symbolic is the flag of a text that is a symbol of Ruby.
func (r *loose) symbolic(t *tok) uint16 {
	if r.lang == Ruby && int(t.off)+1 < len(r.src) && (r.src[t.off] == ':' || r.src[t.off] == '%' && r.src[t.off+1]|32 == 'i') {
		return Symbol
	}
	return 0
}

// number gives a number as most languages write it.
func number(s string, lang Language) string {
	s = strings.ReplaceAll(s, "_", "")
	for _, suffix := range []string{"u16", "u32", "u64", "i32", "i64", "usize", "u8", "L", "l", "UL", "f", "d", "m", "u"} {
		if rest := strings.TrimSuffix(s, suffix); rest != s && rest != "" && !strings.HasPrefix(s, "0x") {
			return rest
		}
	}
	return s
}

// pieces are the parts of a text with expressions in it.
func (r *loose) pieces(t *tok) []*Node {
	var list []*Node
	for _, p := range t.parts {
		if p.toks == nil {
			if p.text != "" {
				list = append(list, &Node{Kind: String, Name: p.text, Off: p.off, End: p.end})
			}
			continue
		}
		sub := &loose{reader: r.part(p.toks)}
		if sub.depth >= maxReaderDepth {
			continue
		}
		e := sub.expr(0)
		r.shared += sub.shared
		if e != nil {
			list = append(list, e)
		}
	}
	return list
}

func (r *loose) named() *Node {
	t := r.cur()
	n := &Node{Off: t.off}
	next := r.at(1)
	switch t.text {
	case "true", "True":
		n.Kind = True
	case "false", "False":
		n.Kind = False
	case "null", "nil", "NULL", "None":
		n.Kind = Null
	case "new":
		if r.lang != Ruby && next.kind == tName {
			r.pos++
			n.Kind = New
			if r.lang == PHP && r.isN("class") { // one without a name, with what it is made of before its body
				n.Kids = []*Node{nil}
				if r.pos++; r.isP("(") {
					r.arguments(n)
				}
				r.pos-- // class() steps over the word before it
				c := r.class()
				c.Name = "class@" + strconv.Itoa(int(c.Off))
				n.Kids[0] = c
				return r.postfix(r.done(n))
			}
			n.Kids = []*Node{r.dotted()}
			if r.isP("<") {
				r.generics()
			} else {
				r.eatP("<>")
			}
			if r.isP("(") {
				r.arguments(n)
			}
			var sizes []*Node
			sized := false
			for r.isP("[") {
				if sized = true; r.lang == Java && r.at(1).text != "]" {
					r.pos++
					if e := r.expr(0); e != nil {
						sizes = append(sizes, e)
					}
					r.eatP("]")
					continue
				}
				r.skipBalanced()
			}
			if sized && r.lang == Java {
				if r.isP("{") {
					return r.prefix()
				}
				typ := ""
				if len(n.Kids) > 0 {
					typ = n.Kids[0].Dotted()
				}
				return r.postfix(r.done(&Node{Kind: Unknown, Name: Sized, Alias: typ, Off: t.off, Kids: sizes}))
			}
			if r.isP("{") { // an initialiser or an anonymous class
				b := r.braces()
				n.Kids = append(n.Kids, &Node{Kind: Func, Off: b.Off, End: b.End, Kids: []*Node{{Kind: Params, Off: b.Off, End: b.Off}, b}})
			}
			return r.postfix(r.done(n))
		}
	case "if", "unless":
		s := r.ifStmt()
		return r.postfix(r.whole(s, r.done(&Node{Kind: Cond, Off: t.off, Kids: []*Node{s.Kids[0], last(s.Kids[1]), last(s.Kids[2])}})))
	case "case", "when", "match", "switch", "cond":
		if next.kind != tPunct || next.text == "(" || next.text == "{" || r.lang == Ruby && t.text == "case" && next.text != ":" && next.text != "," && next.text != ")" {
			arms := r.arms()
			if r.lang == PHP && t.text == "match" && !slices.ContainsFunc(arms, func(a arm) bool { return a.test == nil }) { // what no arm takes is an error
				none := &Node{Kind: Throw, Off: t.off, End: r.end(), Kids: []*Node{nil}}
				arms = append(arms, arm{nil, r.one(none), t.off})
			}
			e := chained(arms, true)
			if e.Is(Block) {
				e = &Node{Kind: Unknown, Off: t.off, Kids: calls(e)}
			}
			return r.postfix(r.whole(chained(arms, false), r.done(e)))
		}
	case "clone":
		if r.lang == PHP && next.kind == tName {
			r.pos++
			n.Kind, n.Name = Name, t.text
			r.done(n)
			c := &Node{Kind: Call, Off: t.off, Kids: []*Node{n}}
			if e := r.expr(16); e != nil {
				c.Kids = append(c.Kids, e)
			}
			return r.done(c)
		}
	case "begin", "try":
		if r.words() || r.lang == Kotlin {
			s := r.try()
			if s == nil {
				return nil
			}
			e := last(s.Kid(0))
			for _, k := range s.Kids[min(1, len(s.Kids)):] {
				if alt := last(k); k.Is(Block) && k.Name == "catch" && e != nil && alt != nil {
					e = &Node{Kind: Binary, Name: "rescue", Off: t.off, Kids: []*Node{e, alt}}
				}
			}
			if e == nil {
				e = &Node{Kind: Unknown, Off: t.off, Kids: calls(s)}
			}
			return r.postfix(r.whole(s, r.done(e)))
		}
	case "fn":
		if r.lang == Elixir { // fn x -> … end
			r.pos++
			ps := &Node{Kind: Params, Off: t.off}
			for r.cur().kind != tEOF && !r.isP("->") && !r.isN("end") {
				if r.cur().kind == tName {
					ps.Kids = append(ps.Kids, &Node{Kind: Param, Name: r.cur().text, Off: r.cur().off, End: r.cur().end, Kids: []*Node{nil, nil}})
				}
				r.pos++
			}
			r.eatP("->")
			return r.postfix(r.done(&Node{Kind: Func, Off: t.off, Kids: []*Node{r.done(ps), r.blockToEnd()}}))
		}
		fallthrough
	case "function", "fun", "lambda", "proc":
		if next.kind == tPunct && (next.text == "(" || next.text == "&") && (r.lang == PHP || r.lang == Kotlin) {
			r.pos++
			r.eatP("&")
			ps := r.params()
			uses := ""
			if r.eatN("use") && r.isP("(") {
				start := r.pos
				r.skipBalanced()
				for _, x := range r.toks[start:r.pos] {
					if x.kind == tName || x.text == "&" || x.text == "," {
						uses += x.text
					}
				}
			}
			for r.cur().kind != tEOF && !r.isP("{") && !r.isP("=>") && !r.isP(";") && !r.isP("=") {
				r.pos++
			}
			if r.eatP("=>") || r.eatP("=") {
				return r.closure(t.off, ps)
			}
			return r.postfix(r.done(&Node{Kind: Func, Alias: uses, Off: t.off, Kids: []*Node{ps, r.braces()}}))
		}
	case "yield", "return", "next", "break", "retry", "redo":
		if r.lang == Ruby && !(next.kind == tPunct && (next.text == "." || next.text == "=")) {
			return r.jumping()
		}
		if t.text != "yield" && t.text != "return" {
			break
		}
		fallthrough
	case "await", "move", "unsafe", "async", "static", "ref", "out", "throw", "not", "const", "defined?":
		if next.kind != tPunct || next.text == "(" && (t.text == "await" || t.text == "not") || next.text == "{" && (t.text == "async" || t.text == "unsafe" || t.text == "move") || next.text == "|" {
			r.pos++
			e := r.expr(3)
			if e == nil {
				return nil
			}
			switch t.text {
			case "await":
				n.Kind, n.Kids = Await, []*Node{e}
				return r.done(n)
			case "not":
				n.Kind, n.Name, n.Kids = Unary, "!", []*Node{e}
				return r.done(n)
			case "throw":
				if r.lang == Ruby {
					n.Kind, n.Kids = Call, []*Node{{Kind: Name, Name: t.text, Off: t.off, End: t.end}, e}
					for r.eatP(",") {
						if e := r.expr(3); e != nil {
							n.Kids = append(n.Kids, e)
						}
					}
					return r.done(n)
				}
				n.Kind, n.Kids = Throw, []*Node{e}
				return r.done(n)
			}
			return e
		}
	case "do", "end", "else", "then", "elsif", "rescue", "ensure":
		if r.words() {
			return nil
		}
	}
	if n.Kind != Unknown {
		r.pos++
		return r.postfix(r.done(n))
	}
	// x -> …, x => …: a lambda
	if next.kind == tPunct && (next.text == "->" && r.lang == Java && !r.label || next.text == "=>" && r.lang == CSharp) {
		r.pos += 2
		ps := &Node{Kind: Params, Off: t.off, End: t.end, Kids: []*Node{{Kind: Param, Name: t.text, Off: t.off, End: t.end, Kids: []*Node{nil, nil}}}}
		return r.closure(t.off, ps)
	}
	r.pos++
	n.Kind, n.Name = Name, t.text
	r.done(n)
	if len(t.text) > 1 && t.text[0] == '@' && r.lang == Ruby { // @x belongs to the object
		n.Kind, n.Name = Member, t.text[1:]
		n.Kids = []*Node{{Kind: Name, Name: "self", Off: t.off, End: t.off}}
		return r.postfix(n)
	}
	if r.lang == Rust && r.isP("!") && r.at(1).kind == tPunct && strings.Contains("([{", r.at(1).text) { // a macro
		r.pos++
		c := &Node{Kind: Call, Off: n.Off, Kids: []*Node{n}}
		if r.isP("(") {
			r.arguments(c)
		} else {
			r.skipBalanced()
		}
		return r.postfix(r.done(c))
	}
	if c := r.bareCall(n); c != nil {
		return c
	}
	return r.postfix(n)
}

// whole is an expression that is made of a statement: where its value is not all
// that it does, the statement stands beside it.
func (r *loose) whole(s, e *Node) *Node {
	if !r.keepsJumps() || plainWay(s) {
		return e
	}
	s.Off = e.Off
	return r.done(&Node{Kind: Array, Name: LastOf, Alias: Whole, Off: e.Off, Kids: []*Node{s, e}})
}

// plainWay reports whether the ways of a condition are one expression each.
func plainWay(s *Node) bool {
	switch {
	case s == nil:
		return true
	case s.Is(If):
		return s.Kid(1) != nil && plainWay(s.Kid(1)) && plainWay(s.Kid(2))
	case s.Is(Block):
		return len(s.Kids) == 1 && s.Kids[0].Is(ExprStmt) && s.Name == ""
	case s.Is(Try): // the second expression where the first fails
		for _, k := range s.Kids {
			if !k.Is(Block) || k.Name != "try" && k.Name != "catch" || len(k.Kids) != 1 || !k.Kids[0].Is(ExprStmt) || k.Alias != "" {
				return false
			}
		}
		return len(s.Kids) == 2
	}
	return false
}

// casts are the types that PHP converts to (PHP manual, "Type Juggling").
var casts = map[string]bool{"int": true, "integer": true, "string": true, "bool": true, "boolean": true, "float": true, "double": true, "array": true, "object": true, "binary": true}

// jumping reads yield, return, next and break of Ruby where an expression may
// stand.
func (r *loose) jumping() *Node {
	t := r.cur()
	n := &Node{Kind: Jump, Name: t.text, Off: t.off}
	r.pos++
	switch t.text {
	case "return":
		n.Kind, n.Name = Return, ""
	case "next":
		n.Name = "continue"
	case "yield":
		n.Kind, n.Name = Call, ""
		n.Kids = []*Node{{Kind: Name, Name: Yield, Off: t.off, End: t.end}}
		if r.isP("(") && r.glued() {
			r.arguments(n)
			return r.postfix(r.done(n))
		}
	}
	if r.begins(r.cur()) {
		for {
			start := r.pos
			r.argument(n)
			if r.pos == start || !r.isP(",") {
				break
			}
			r.pos++
		}
	}
	if n.Is(Return) && n.Kids == nil {
		n.Kids = []*Node{nil}
	}
	return r.postfix(r.done(n))
}

// last is the value of a block: its last expression.
func last(b *Node) *Node {
	if b.Is(If) {
		return &Node{Kind: Cond, Off: b.Off, End: b.End, Kids: []*Node{b.Kids[0], last(b.Kids[1]), last(b.Kids[2])}}
	}
	if !b.Is(Block) || len(b.Kids) == 0 {
		return nil
	}
	s := b.Kids[len(b.Kids)-1]
	if s.Is(ExprStmt) || s.Is(Return) || s.Is(Jump) && s.Name == Yield {
		return s.Kid(0)
	}
	return nil
}

// calls are the calls below a statement, for expressions whose value is not
// followed.
func calls(s *Node) []*Node {
	var list []*Node
	s.Walk(func(n *Node) bool {
		if n.Is(Call) || n.Is(New) {
			list = append(list, n)
			return false
		}
		return true
	})
	return list
}

// closure reads the body of a lambda after its arrow.
func (r *loose) closure(off int32, ps *Node) *Node {
	f := &Node{Kind: Func, Off: off, Kids: []*Node{ps, nil}}
	if r.isP("{") {
		f.Kids[1] = r.braces()
	} else {
		e := r.assigned(r.expr(1))
		f.Kids[1], f.Flag = e, Arrow
		if e == nil {
			f.Kids[1], f.Flag = &Node{Kind: Block, Off: r.end(), End: r.end()}, 0
		}
	}
	return r.done(f)
}

// arrow reads (a, b) -> … and (a, b) => …; nil where that is none.
func (r *loose) arrow() *Node {
	if r.lang != Java && r.lang != CSharp {
		return nil
	}
	depth := 0
	for i := 0; i < 200; i++ {
		t := r.at(i)
		if t.kind == tEOF {
			return nil
		}
		if t.kind != tPunct {
			continue
		}
		if t.text == "(" {
			depth++
		}
		if t.text == ")" {
			if depth--; depth == 0 {
				if a := r.at(i + 1); a.kind == tPunct && (a.text == "->" || a.text == "=>") {
					off := r.cur().off
					ps := r.params()
					r.pos++
					return r.closure(off, ps)
				}
				return nil
			}
		}
	}
	return nil
}

// lambda reads { a, b -> … } of Kotlin and Groovy, and blocks as values.
func (r *loose) lambda() *Node {
	off := r.cur().off
	ps := &Node{Kind: Params, Off: off, End: off}
	for i := 1; i < 30; i++ {
		t := r.at(i)
		if t.kind == tPunct && t.text == "->" {
			for j := 1; j < i; j++ {
				if x := r.at(j); x.kind == tName && (j == 1 || r.at(j-1).kind == tPunct && (r.at(j-1).text == "," || r.at(j-1).text == "(")) {
					ps.Kids = append(ps.Kids, &Node{Kind: Param, Name: x.text, Off: x.off, End: x.end, Kids: []*Node{nil, nil}})
				}
			}
			r.pos += i
			// The arrow stands where the brace stood.
			b := &Node{Kind: Block, Off: off}
			r.pos++
			for !r.isP("}") && r.cur().kind != tEOF {
				start := r.pos
				r.into(b, r.stmt())
				if r.pos == start {
					r.pos++
				}
			}
			r.eatP("}")
			return r.done(&Node{Kind: Func, Off: off, Kids: []*Node{ps, r.done(b)}})
		}
		if t.kind == tEOF || t.kind != tName && !(t.kind == tPunct && strings.Contains(",:<>?.()", t.text)) {
			break
		}
	}
	b := r.braces()
	return r.done(&Node{Kind: Func, Off: off, Kids: []*Node{ps, b}})
}

// block1 reads the block that a call is given in Ruby.
func (r *loose) block1() *Node {
	saved := r.noDo
	r.noDo = false
	defer func() { r.noDo = saved }()
	n := &Node{Kind: Block, Off: r.cur().off}
	if r.eatN("do") {
		r.blockParams()
		ps := r.params1
		b := r.until("end", "rescue", "ensure")
		if r.isN("rescue") || r.isN("ensure") {
			try := &Node{Kind: Try, Off: b.Off, Kids: []*Node{named("try", b)}}
			r.handlers(try)
			b = &Node{Kind: Block, Off: b.Off, End: r.done(try).End, Kids: []*Node{try}}
		}
		r.eatN("end")
		r.params1 = ps
		return b
	}
	if !r.eatP("{") {
		r.params1 = &Node{Kind: Params, Off: n.Off, End: n.Off}
		return r.done(n)
	}
	r.blockParams()
	ps := r.params1
	defer func() { r.params1 = ps }()
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		r.into(n, r.stmt())
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	return r.done(n)
}

// blockParams reads the parameters of a block; they are kept for the function
// that is made of it.
func (r *loose) blockParams() {
	ps := &Node{Kind: Params, Off: r.cur().off}
	r.params1 = ps
	if !r.eatP("|") {
		return
	}
	r.blockNames(ps, "|")
	r.eatP("|")
	r.done(ps)
}

// blockNames reads the names between bars, up to a closing sign: with (a, b) the
// parts of one, with * the rest, with = a default.
func (r *loose) blockNames(ps *Node, closing string) {
	flag, alias := uint16(0), ""
	for !r.isP(closing) && r.cur().kind != tEOF && !(r.cur().nl && closing == "|") {
		t := r.cur()
		switch {
		case t.kind == tName:
			p := &Node{Kind: Param, Name: t.text, Flag: flag, Alias: alias, Off: t.off, End: t.end, Kids: []*Node{nil, nil}}
			ps.Kids = append(ps.Kids, p)
			flag, alias = 0, ""
			if eq := r.at(1); eq.kind == tPunct && (eq.text == "=" || eq.text == ":") {
				r.pos += 2
				if eq.text == ":" {
					p.Alias = ":"
				}
				if eq.text == "=" || !r.isP(",") && !r.isP(closing) {
					p.Kids[0] = r.expr(10) // a bar ends it
				}
				continue
			}
		case t.kind == tPunct && (t.text == "*" || t.text == "**"):
			flag = Rest
			if t.text == "**" {
				alias = "**"
			}
		case t.kind == tPunct && t.text == "&":
			alias = "&"
		case t.kind == tPunct && t.text == "(" && r.depth < maxReaderDepth:
			r.pos++
			sub := &Node{Kind: Params}
			r.depth++
			r.blockNames(sub, ")")
			r.depth--
			pattern := &Node{Kind: Array, Off: t.off, End: r.end()}
			for _, k := range sub.Kids {
				x := &Node{Kind: Name, Name: k.Name, Off: k.Off, End: k.End}
				if k.Kids[1] != nil {
					x = k.Kids[1]
				}
				if k.Flag&Rest != 0 {
					x = &Node{Kind: Spread, Off: k.Off, End: k.End, Kids: []*Node{x}}
				}
				pattern.Kids = append(pattern.Kids, x)
			}
			ps.Kids = append(ps.Kids, &Node{Kind: Param, Off: t.off, End: r.end(), Kids: []*Node{nil, pattern}})
		case t.kind == tPunct && t.text == ";": // names of its own
			for !r.isP(closing) && r.cur().kind != tEOF && !r.cur().nl {
				r.pos++
			}
			continue
		}
		r.pos++
	}
}

// begins reports whether an argument of a call without parentheses may begin
// at a token.
func (r *loose) begins(t *tok) bool {
	if t.nl || t.off == r.end() {
		return false
	}
	switch t.kind {
	case tString, tTemplate, tNumber, tRegex:
		return true
	case tName:
		switch t.text {
		case "do", "if", "unless", "while", "until", "and", "or", "in", "then", "rescue", "else", "end", "is", "as", "instanceof", "by", "extends", "implements", "when", "not", "to", "step", "throws", "ensure":
			return false
		}
		return true
	case tPunct:
		switch t.text {
		case "(":
			return r.lang == Ruby
		case "[", "{", "->", "%", "@":
			return t.text == "[" && r.lang != Groovy || t.text == "@" || t.text == "->" && r.lang != Elixir || t.text == "%" && r.lang == Elixir
		case "*", "&", "**", "-", "!":
			n := r.at(1)
			return n.off == t.end && r.lang == Ruby && n.kind != tPunct
		}
	}
	return false
}

// bareCall reads a call without parentheses: gem "rack", implementation 'x'.
func (r *loose) bareCall(callee *Node) *Node {
	if r.lang != Ruby && r.lang != Elixir && r.lang != Groovy && r.lang != PHP {
		return nil
	}
	if r.lang == PHP {
		switch callee.Name {
		case "require", "require_once", "include", "include_once", "echo", "print":
			if t := r.cur(); t.kind == tString || t.kind == tTemplate || t.kind == tName || t.kind == tPunct && t.text == "(" {
				c := &Node{Kind: Call, Off: callee.Off, Kids: []*Node{callee, r.expr(0)}}
				return r.done(c)
			}
		}
		return nil
	}
	if !r.begins(r.cur()) {
		return nil
	}
	c := &Node{Kind: Call, Off: callee.Off, Kids: []*Node{callee}}
	saved := r.noDo
	r.noDo = r.lang == Ruby // a do behind the arguments belongs to the call
	for {
		start := r.pos
		r.argument(c)
		if r.pos == start || !r.isP(",") {
			break
		}
		r.pos++
	}
	r.noDo = saved
	r.done(c)
	// Groovy goes on: id 'x' version 'y' is id('x').version('y').
	for r.lang == Groovy && r.cur().kind == tName && !r.cur().nl && !r.isN("if") {
		m := &Node{Kind: Member, Name: r.cur().text, Off: c.Off, End: r.cur().end, Kids: []*Node{c}}
		r.pos++
		if !r.begins(r.cur()) {
			return m
		}
		c = &Node{Kind: Call, Off: c.Off, Kids: []*Node{m}}
		r.argument(c)
		r.done(c)
	}
	return r.withBlock(c)
}

// withBlock adds the block that follows a call.
func (r *loose) withBlock(c *Node) *Node {
	switch {
	case r.lang == Ruby && !r.cur().nl && (r.isN("do") && !r.noIn && !r.noDo || r.isP("{")):
		off := r.cur().off
		b := r.block1()
		c.Kids = append(c.Kids, &Node{Kind: Func, Off: off, End: r.end(), Kids: []*Node{r.params1, b}})
		return r.postfix(r.done(c))
	case r.lang == Elixir && r.isN("do") && !r.noIn && !r.cur().nl:
		off := r.cur().off
		r.pos++
		b := r.until("end")
		r.eatN("end")
		c.Kids = append(c.Kids, &Node{Kind: Func, Off: off, End: r.end(), Kids: []*Node{{Kind: Params, Off: off, End: off}, b}})
		return r.done(c)
	case (r.lang == Kotlin || r.lang == Groovy) && r.isP("{") && !r.cur().nl && !r.noIn:
		c.Kids = append(c.Kids, r.lambda())
		return r.postfix(r.done(c))
	}
	return c
}

// items reads the items of a list or a map up to a closing sign.
func (r *loose) items(n *Node, closing string) {
	saved, do := r.noIn, r.noDo
	r.noIn, r.noDo = false, false
	defer func() { r.noIn, r.noDo = saved, do }()
	pairs := false
	for !r.isP(closing) && r.cur().kind != tEOF {
		start := r.pos
		t := r.cur()
		var item *Node
		if r.lang == PHP && t.kind == tPunct && t.text == "," { // [, $b]: none is taken
			n.Kids = append(n.Kids, &Node{Kind: Undefined, Off: t.off, End: t.off})
			r.pos++
			continue
		}
		if (t.kind == tName || t.kind == tString) && r.at(1).kind == tPunct && r.at(1).text == ":" && (r.at(1).off == t.end || r.lang == Groovy) && r.lang != PHP {
			r.pos += 2
			item = &Node{Kind: Pair, Name: t.text, Off: t.off, Kids: []*Node{r.named1(t)}}
			if r.lang == Ruby {
				item.Flag = Symbol
			}
			pairs = true
		} else if r.lang == Rust && t.kind == tPunct && t.text == ".." && closing == "}" { // the rest as in another value
			r.pos++
			item = &Node{Kind: Spread, Off: t.off, Kids: []*Node{r.expr(0)}}
		} else {
			item = r.expr(0)
			if r.eatP("=>") {
				key := item
				item = &Node{Kind: Pair, Off: t.off, Kids: []*Node{r.expr(0)}}
				if key.Is(String) {
					item.Name, item.Flag = key.Name, key.Flag&Symbol
				} else if key != nil {
					item.Kids = append(item.Kids, key)
				}
				pairs = true
			}
		}
		if item != nil {
			n.Kids = append(n.Kids, r.done(item))
		}
		if r.lang == PHP {
			r.eatP(",")
		} else {
			for r.isP(",") || r.isP(";") || r.isP("|") {
				r.pos++
			}
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP(closing)
	if pairs {
		n.Kind = Object
	}
}

// named1 is the value behind a name and a colon; in Ruby a name alone stands for
// its own value.
func (r *loose) named1(t *tok) *Node {
	if r.lang == Ruby && t.kind == tName && (r.isP(",") || r.isP("}") || r.isP(")")) {
		return &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}
	}
	return r.expr(0)
}

// arguments reads the arguments of a call in parentheses.
func (r *loose) arguments(c *Node) {
	r.eatP("(")
	saved, do := r.noIn, r.noDo
	r.noIn, r.noDo = false, false
	for !r.isP(")") && r.cur().kind != tEOF {
		start := r.pos
		r.argument(c)
		r.eatP(",")
		if r.pos == start {
			r.pos++
		}
	}
	r.noIn, r.noDo = saved, do
	r.eatP(")")
}

// argument reads one argument: by place, or by name.
func (r *loose) argument(c *Node) {
	if r.lang == CSharp && r.isN("out") && r.at(1).kind == tName {
		r.outward(c)
		return
	}
	t := r.cur()
	if t.kind == tName || t.kind == tString {
		next := r.at(1)
		byName := next.kind == tPunct && (next.text == ":" && (next.off == t.end || r.lang == CSharp || r.lang == Groovy || r.lang == PHP) && !(r.lang == Ruby && r.at(2).kind == tPunct && r.at(2).text == ":") || next.text == "=" && (r.lang == Kotlin || r.lang == Java || r.lang == CSharp || r.lang == Rust))
		if byName {
			r.pos += 2
			k := &Node{Kind: Keyword, Name: t.text, Off: t.off, Kids: []*Node{r.named1(t)}}
			if r.lang == Ruby {
				k.Flag = Symbol
			}
			c.Kids = append(c.Kids, r.done(k))
			return
		}
	}
	e := r.expr(0)
	if e == nil {
		return
	}
	if r.lang == Ruby || r.lang == PHP {
		e = r.assigned(e)
	}
	if r.isP("=>") && (r.lang == Ruby || r.lang == PHP) {
		r.pos++
		v := r.expr(0)
		if e.Is(String) {
			c.Kids = append(c.Kids, r.done(&Node{Kind: Keyword, Name: e.Name, Flag: e.Flag & Symbol, Off: t.off, Kids: []*Node{v}}))
			return
		}
		c.Kids = append(c.Kids, v)
		return
	}
	if r.isP("=") && e.Is(Name) && (r.lang == Java || r.lang == Kotlin) {
		r.pos++
		c.Kids = append(c.Kids, r.done(&Node{Kind: Keyword, Name: e.Name, Off: t.off, Kids: []*Node{r.expr(0)}}))
		return
	}
	c.Kids = append(c.Kids, e)
}

// patterned reads what stands behind is: null, not null, { } x, string x, a
// value (C# reference, "Patterns").
func (r *loose) patterned(left *Node) *Node {
	n := r.alternatives(left, 0)
	if n == nil {
		n = &Node{Kind: Unknown, Kids: []*Node{left}}
	}
	n.Off = left.Off
	return r.done(n)
}

// alternatives reads patterns of C# with or, and, not between them as a test of
// what stands on the left (C# language reference, "Pattern matching").
func (r *loose) alternatives(left *Node, least int) *Node {
	if !r.enter() {
		return nil
	}
	defer r.leave()
	var n *Node
	if r.isN("not") {
		r.pos++
		n = r.alternatives(left, 2)
		if n.Is(Binary) && (n.Name == "==" || n.Name == "!=") {
			n.Name = map[string]string{"==": "!=", "!=": "=="}[n.Name]
		} else {
			n = r.done(&Node{Kind: Unary, Name: "!", Off: left.Off, Kids: []*Node{n}})
		}
	} else {
		n = r.onePattern(left)
	}
	for n != nil {
		switch {
		case r.isN("or") && least < 1:
			r.pos++
			n = r.done(&Node{Kind: Binary, Name: "||", Off: left.Off, Kids: []*Node{n, r.alternatives(left, 1)}})
		case r.isN("and") && least < 2:
			r.pos++
			n = r.done(&Node{Kind: Binary, Name: "&&", Off: left.Off, Kids: []*Node{n, r.alternatives(left, 2)}})
		default:
			return n
		}
	}
	return n
}

// onePattern reads a pattern of C# without what connects it to others.
func (r *loose) onePattern(left *Node) *Node {
	t := r.cur()
	test := func(name string, right *Node) *Node {
		return r.done(&Node{Kind: Binary, Name: name, Off: left.Off, Kids: []*Node{left, right}})
	}
	null := &Node{Kind: Null, Off: t.off, End: t.end}
	switch {
	case r.isN("null"):
		r.pos++
		return test("==", null)
	case t.kind == tString || t.kind == tNumber || r.isN("true") || r.isN("false"):
		return test("==", r.expr(8))
	case r.isP("<") || r.isP(">") || r.isP("<=") || r.isP(">="):
		r.pos++
		return test(t.text, r.expr(8))
	case r.isP("("):
		r.pos++
		n := r.alternatives(left, 0)
		r.eatP(")")
		return n
	case r.isP("{") || t.kind == tName: // something, under a name
		known := r.isN("string") || r.isN("var") || r.isP("{")
		anything := r.isN("var")
		var more *Node
		if !r.isP("{") {
			r.dotted()
			r.eatP("?")
		}
		if r.isP("{") {
			var ok bool
			if more, ok = r.propertyPatterns(left); !ok {
				known = false
			}
		}
		if x := r.cur(); x.kind == tName && !x.nl && x.text != "and" && x.text != "or" {
			r.pos++
			set := r.done(&Node{Kind: Assign, Name: "=", Off: left.Off, Kids: []*Node{{Kind: Name, Name: x.text, Off: x.off, End: x.end}, left}})
			left = set
		}
		switch {
		case !known:
			return r.done(&Node{Kind: Unknown, Off: left.Off, Kids: []*Node{left}})
		case anything:
			return r.done(&Node{Kind: Binary, Name: "||", Off: left.Off, Kids: []*Node{test("!=", null), {Kind: True, Off: left.Off, End: left.End}}})
		case more != nil:
			return r.done(&Node{Kind: Binary, Name: "&&", Off: left.Off, Kids: []*Node{test("!=", null), more}})
		}
		return test("!=", null)
	}
	return r.done(&Node{Kind: Unknown, Off: left.Off, Kids: []*Node{left}})
}

// propertyPatterns reads { Length: > 0, Name: "x" } as a test of these properties;
// nil where there are none in the braces, ok is false where they are not read.
func (r *loose) propertyPatterns(left *Node) (n *Node, ok bool) {
	start := r.pos
	r.pos++
	for !r.isP("}") && r.cur().kind == tName && r.at(1).kind == tPunct && r.at(1).text == ":" {
		of := &Node{Kind: Member, Name: r.cur().text, Off: left.Off, End: left.End, Kids: []*Node{left}}
		r.pos += 2
		one := r.alternatives(of, 0)
		if one == nil {
			break
		}
		if n != nil {
			one = r.done(&Node{Kind: Binary, Name: "&&", Off: left.Off, Kids: []*Node{n, one}})
		}
		if n = one; !r.eatP(",") {
			break
		}
	}
	if !r.eatP("}") {
		r.pos = start
		r.skipBalanced()
		return nil, false
	}
	return n, true
}

// outward reads an argument that a method sets: int.TryParse(s, out var n) sets
// n to what Parse gives, or 0.
func (r *loose) outward(c *Node) {
	r.pos++
	for r.at(1).kind == tName || r.at(1).kind == tPunct && r.at(1).text == "?" {
		r.pos++
	}
	t := r.cur()
	r.pos++
	name := &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}
	value := &Node{Kind: Unknown, Off: t.off, End: t.end}
	if f := c.Kid(0); f.Is(Member) && f.Name == "TryParse" && c.Kid(1) != nil {
		parse := *f
		parse.Name = "Parse"
		call := &Node{Kind: Call, Off: c.Off, End: t.end, Kids: []*Node{&parse, c.Kids[1]}}
		value = &Node{Kind: Binary, Name: "rescue", Off: c.Off, End: t.end, Kids: []*Node{call, {Kind: Number, Name: "0", Off: t.off, End: t.end}}}
	}
	c.Kids = append(c.Kids, r.done(&Node{Kind: Assign, Name: "=", Off: t.off, Kids: []*Node{name, value}}))
}

// postfix reads members, calls and indexes behind a value.
func (r *loose) postfix(n *Node) *Node {
	for n != nil {
		t := r.cur()
		if t.kind == tName {
			if c := r.infixCall(n); c != nil {
				n = c
				continue
			}
			return n
		}
		if t.kind != tPunct {
			return n
		}
		switch t.text {
		case ".":
			next := r.at(1)
			if next.kind != tName {
				if next.kind == tPunct && next.text == "(" { // f.() of Elixir and Ruby
					r.pos++
					continue
				}
				if next.kind == tPunct && next.text == "<" && r.lang == Rust { // turbofish
					r.pos++
					if first := r.at(1); r.generics() {
						n.Alias = first.text
						continue
					}
				}
				if r.lang == Java && next.kind == tPunct && next.text == "<" { // the types of what it calls
					if r.pos++; r.generics() && r.cur().kind == tName {
						name := r.cur()
						r.pos++
						n = r.done(&Node{Kind: Member, Name: name.text, Off: n.Off, Kids: []*Node{n}})
						continue
					}
					return n
				}
				if r.lang == PHP && next.kind == tPunct && next.text == "{" { // a property that an expression names
					r.pos += 2
					named := r.expr(0)
					for r.cur().kind != tEOF && !r.isP("}") {
						r.pos++
					}
					r.eatP("}")
					n = r.done(&Node{Kind: Member, Name: "${}", Off: n.Off, Kids: []*Node{n, named}})
					switch r.src[t.off] {
					case '?':
						n.Flag |= OptionalOp
					case ':':
						n.Flag |= Static
					}
					continue
				}
				if next.kind == tString || next.kind == tNumber {
					r.pos++
					continue
				}
				return n
			}
			r.pos += 2
			n = r.done(&Node{Kind: Member, Name: next.text, Off: n.Off, Kids: []*Node{n}})
			switch c := r.src[t.off]; {
			case c == '?' || c == '&': // ?. ?-> &.
				n.Flag |= OptionalOp
			case c == ':' && r.lang == Java: // a method as a value
				n.Flag |= Address
			case c == ':' && r.keepsJumps():
				n.Flag |= Static
			}
			if r.lang == Rust && next.text == "await" {
				n = n.Kids[0]
				continue
			}
			if r.words() || r.lang == Groovy {
				if c := r.bareCall(n); c != nil {
					return c
				}
			}
		case "(":
			if t.nl && (r.lines() || r.lang == PHP) || r.words() && !r.glued() && !n.Is(Func) {
				return n
			}
			c := &Node{Kind: Call, Off: n.Off, Kids: []*Node{n}}
			r.arguments(c)
			n = r.withBlock(r.done(c))
		case "[":
			if t.nl || r.words() && !r.glued() {
				return n
			}
			r.pos++
			e := r.expr(0)
			kids := []*Node{n, e}
			for r.lang == Ruby && e != nil && r.eatP(",") { // a part: [from, length]
				if k := r.expr(0); k != nil {
					kids = append(kids, k)
				}
			}
			for r.cur().kind != tEOF && !r.isP("]") {
				r.pos++
			}
			r.eatP("]")
			n = r.done(&Node{Kind: Index, Off: n.Off, Kids: kids})
		case "{":
			// A call with a block alone: dependencies { … }
			if (r.lang == Kotlin || r.lang == Groovy || r.lang == Ruby) && !t.nl && !r.noIn && (n.Is(Name) || n.Is(Member)) {
				c := &Node{Kind: Call, Off: n.Off, Kids: []*Node{n}}
				return r.withBlock(c)
			}
			if r.lang == Rust && (n.Is(Name) || n.Is(Member)) && !r.noIn && len(n.Name) > 0 && n.Name[0] >= 'A' && n.Name[0] <= 'Z' { // a value of a struct
				r.pos++
				o := &Node{Kind: Object, Off: n.Off, Alias: n.Name}
				r.items(o, "}")
				for i, k := range o.Kids {
					if k.Is(Name) { // a field named as the variable
						o.Kids[i] = &Node{Kind: Pair, Name: k.Name, Off: k.Off, End: k.End, Kids: []*Node{k}}
					}
				}
				o.Kind = Object
				n = r.done(o)
				continue
			}
			return n
		case "!", "?":
			// Null assertions.
			if t.off == r.end() && !t.nl && (r.lang == CSharp && t.text == "!" && !(r.at(1).kind == tPunct && r.at(1).text == "=")) {
				r.pos++
				continue
			}
			return n
		case "!!":
			r.pos++
		case "++", "--":
			r.pos++
			if r.lang == Java || r.lang == PHP {
				n = r.done(&Node{Kind: Unary, Name: t.text, Off: n.Off, Kids: []*Node{n}})
			}
		default:
			return n
		}
	}
	return n
}

// infixCall reads a block after a name (Ruby: loop do … end), and infix
// functions of Kotlin.
func (r *loose) infixCall(n *Node) *Node {
	if r.lang == CSharp && r.isN("switch") && r.at(1).kind == tPunct && r.at(1).text == "{" {
		r.pos++
		return r.done(chained(r.armsOf(n, false), true))
	}
	if r.isN("do") && !r.cur().nl && !r.noIn && !r.noDo && r.words() && (n.Is(Name) || n.Is(Member) || n.Is(Call)) {
		if n.Is(Call) {
			return r.withBlock(n)
		}
		return r.withBlock(&Node{Kind: Call, Off: n.Off, Kids: []*Node{n}})
	}
	if r.lang == Kotlin && !r.cur().nl && (n.Is(String) || n.Is(Call)) && (r.isN("version") || r.isN("apply")) { // id("x") version "1"
		name := r.cur().text
		r.pos++
		e := r.expr(15)
		return r.done(&Node{Kind: Call, Off: n.Off, Kids: []*Node{r.done(&Node{Kind: Member, Name: name, Off: n.Off, Kids: []*Node{n}}), e}})
	}
	return nil
}

// quoteNext reports whether another text follows on the same line, or on one that a
// backslash joins to it: both are one (Ruby 3.4, "String Literals").
func (r *loose) quoteNext(before *tok) bool {
	t := r.cur()
	if t.kind != tString && t.kind != tTemplate || t.nl || t.off < before.end || int(t.off) >= len(r.src) {
		return false
	}
	return strings.IndexByte("\"'", r.src[t.off]) >= 0 && strings.IndexByte("\"'", r.src[before.end-1]) >= 0
}

// joinedTexts is a text with those that follow it.
func (r *loose) joinedTexts(n *Node) *Node {
	kids := []*Node{n}
	if n.Is(Template) {
		kids = n.Kids
	}
	end := &r.toks[r.pos-1]
	for r.quoteNext(end) {
		end = r.cur()
		r.pos++
		if end.kind == tTemplate {
			kids = append(kids, r.pieces(end)...)
		} else {
			kids = append(kids, &Node{Kind: String, Name: end.text, Off: end.off, End: end.end})
		}
	}
	return &Node{Kind: Template, Kids: kids, Off: n.Off, End: end.end}
}
