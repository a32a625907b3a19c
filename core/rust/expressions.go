package rust

import (
	"slices"
	"strings"
)

func (p *parser) make(k ExprKind, off int32, kids ...*Expr) *Expr {
	return &Expr{Kind: k, Off: off, End: p.end(), Kids: kids}
}

// block reads statements in braces.
func (p *parser) block() *Expr {
	p.down()
	defer p.up()
	off := p.cur().off
	p.want("{")
	bare := p.bare
	p.bare = false
	b := &Expr{Kind: BlockExpr, Off: off}
	p.inner()
	for !p.eat("}") {
		if p.cur().kind == tEnd {
			p.fail("a block that does not end")
		}
		b.Tail = false
		if s := p.statement(); s != nil {
			b.Kids = append(b.Kids, s)
			b.Tail = s.Kind != ExprStmt && s.Kind != LetStmt && s.Kind != ItemStmt
		}
	}
	p.bare = bare
	b.End = p.end()
	return b
}

// blockLike reports whether an expression ends a statement by its brace.
func blockLike(e *Expr) bool {
	switch e.Kind {
	case BlockExpr, IfExpr, MatchExpr, LoopExpr:
		return true
	}
	return false
}

// statement reads one; nil for an empty one. An expression that no semicolon follows is
// given as it is.
func (p *parser) statement() *Expr {
	if p.eat(";") {
		return nil
	}
	off := p.cur().off
	at := p.i
	attrs := p.attributes()
	if p.beginsItem() {
		p.i = at
		it := p.item()
		if it == nil {
			return nil
		}
		s := p.make(ItemStmt, off)
		s.Item = it
		return s
	}
	away := forTests(attrs)
	if p.isWord("let") {
		p.next()
		s := &Expr{Kind: LetStmt, Off: off, Pat: p.pattern()}
		if p.eat(":") {
			s.Type = p.typ()
		}
		if p.eat("=") {
			s.Kids = append(s.Kids, p.expr())
			if p.eatWord("else") {
				s.Kids = append(s.Kids, p.block())
			}
		}
		p.want(";")
		s.End = p.end()
		if away {
			return nil
		}
		return s
	}
	e := p.blockFirst()
	if e == nil {
		e = p.expr()
	} else if p.is(".") || p.is("?") {
		e = p.rest(p.after(e), 0)
	}
	switch {
	case p.eat(";"):
		e = &Expr{Kind: ExprStmt, Off: off, End: p.end(), Kids: []*Expr{e}}
	case p.is("}"):
	case blockLike(e):
		e = &Expr{Kind: ExprStmt, Off: off, End: p.end(), Kids: []*Expr{e}}
	case e.Kind == MacroExpr && p.at(-1).text == "}":
		e = &Expr{Kind: ExprStmt, Off: off, End: p.end(), Kids: []*Expr{e}}
	default:
		p.fail("a statement")
	}
	if away {
		return nil
	}
	return e
}

// beginsItem reports whether a declaration begins here.
func (p *parser) beginsItem() bool {
	t := p.cur()
	if t.kind != tWord {
		return false
	}
	switch t.text {
	case "use", "struct", "enum", "impl", "trait", "mod", "type", "pub", "extern", "static":
		return true
	case "const":
		return !p.signAt(1, "{")
	case "macro_rules":
		return p.signAt(1, "!")
	}
	return p.isFn()
}

// blockFirst reads an expression that begins a statement and ends with its brace; nil
// where none begins here.
func (p *parser) blockFirst() *Expr {
	t := p.cur()
	switch {
	case p.is("{"), t.kind == tLifetime && p.signAt(1, ":"):
		return p.operand()
	case t.kind != tWord:
		return nil
	}
	switch t.text {
	case "if", "match", "loop", "while", "for":
		return p.operand()
	case "unsafe", "const":
		if p.signAt(1, "{") {
			return p.operand()
		}
	}
	return nil
}

// powers are the operators by how strong they bind.
var powers = map[string]int{"||": 1, "&&": 2, "==": 3, "!=": 3, "<": 3, ">": 3, "<=": 3, ">=": 3, "|": 4, "^": 5, "&": 6, "<<": 7, ">>": 7, "+": 8, "-": 8, "*": 9, "/": 9, "%": 9}

var assigns = map[string]bool{"=": true, "+=": true, "-=": true, "*=": true, "/=": true, "%=": true, "&=": true, "|=": true, "^=": true, "<<=": true, ">>=": true}

func (p *parser) expr() *Expr {
	p.down()
	defer p.up()
	off := p.cur().off
	if p.is("..") || p.is("..=") {
		return p.rangeFrom(nil, off)
	}
	return p.rest(p.unary(), 0)
}

// rest reads what follows an operand, up to operators that bind less than a power.
func (p *parser) rest(e *Expr, power int) *Expr {
	for {
		t := p.cur()
		switch {
		case t.kind == tWord && t.text == "as":
			p.next()
			c := p.make(CastExpr, e.Off, e)
			c.Type = p.typ()
			c.End = p.end()
			e = c
			continue
		case t.kind != tPunct:
			return e
		case power == 0 && (t.text == ".." || t.text == "..="):
			e = p.rangeFrom(e, e.Off)
			continue
		case power == 0 && assigns[t.text]:
			p.next()
			e = p.make(AssignExpr, e.Off, e, p.expr())
			e.Text, e.End = t.text, p.end()
			return e
		}
		n := powers[t.text]
		if n == 0 || n <= power {
			return e
		}
		p.next()
		right := p.rest(p.unary(), n)
		e = p.make(BinaryExpr, e.Off, e, right)
		e.Text = t.text
	}
}

func (p *parser) rangeFrom(from *Expr, off int32) *Expr {
	sign := p.next().text
	e := &Expr{Kind: RangeExpr, Text: sign, Off: off, Kids: []*Expr{from, nil}}
	t := p.cur()
	ends := t.kind == tEnd || t.kind == tPunct && (strings.Contains(")]},;", t.text) || t.text == "=>" || t.text == "{" && p.bare)
	if !ends {
		e.Kids[1] = p.rest(p.unary(), 1)
	}
	e.End = p.end()
	return e
}

func (p *parser) unary() *Expr {
	p.down()
	defer p.up()
	off := p.cur().off
	switch {
	case p.is("-") || p.is("!") || p.is("*"):
		sign := p.next().text
		e := p.make(UnaryExpr, off, p.unary())
		e.Text, e.End = sign, p.end()
		return e
	case p.half("&"):
		e := &Expr{Kind: RefExpr, Off: off}
		if p.isWord("raw") && (p.wordAt(1, "const") || p.wordAt(1, "mut")) {
			p.i++
		}
		e.Mut = p.eatWord("mut")
		e.Kids = []*Expr{p.unary()}
		e.End = p.end()
		return e
	}
	return p.after(p.operand())
}

// after reads what stands behind an operand and belongs to it.
func (p *parser) after(e *Expr) *Expr {
	for range 4000 {
		switch {
		case p.eat("?"):
			e = p.make(TryExpr, e.Off, e)
		case p.is("("):
			e = p.call(e)
		case p.is("["):
			p.next()
			bare := p.bare
			p.bare = false
			at := p.expr()
			p.bare = bare
			p.want("]")
			e = p.make(IndexExpr, e.Off, e, at)
		case p.eat("."):
			t := p.next()
			switch {
			case t.kind == tWord && t.text == "await":
				e = p.make(AwaitExpr, e.Off, e)
			case t.kind == tWord:
				var types []*Type
				if p.is("::") {
					p.next()
					types = p.angled()
				}
				if p.is("(") {
					m := &Expr{Kind: MethodExpr, Text: t.text, Types: types, Off: e.Off, Kids: []*Expr{e}}
					m.Kids = append(m.Kids, p.arguments()...)
					m.End = p.end()
					e = m
					continue
				}
				e = p.make(FieldExpr, e.Off, e)
				e.Text = t.text
			case t.kind == tNumber:
				for _, name := range strings.Split(t.text, ".") { // a.0.1
					e = p.make(FieldExpr, e.Off, e)
					e.Text = name
				}
			default:
				p.fail("a field")
			}
		default:
			return e
		}
	}
	p.fail("a chain that is too long")
	return e
}

func (p *parser) call(of *Expr) *Expr {
	e := &Expr{Kind: CallExpr, Off: of.Off, Kids: []*Expr{of}}
	e.Kids = append(e.Kids, p.arguments()...)
	e.End = p.end()
	return e
}

func (p *parser) arguments() (list []*Expr) {
	p.want("(")
	bare := p.bare
	p.bare = false
	for !p.eat(")") {
		p.attributes()
		list = append(list, p.expr())
		if !p.eat(",") && !p.is(")") {
			p.fail("an argument")
		}
	}
	p.bare = bare
	return list
}

// test reads a condition: what follows it is a block.
func (p *parser) test() *Expr {
	bare := p.bare
	p.bare = true
	e := p.expr()
	p.bare = bare
	return e
}

// operand reads an expression without what may stand behind it.
func (p *parser) operand() *Expr {
	p.down()
	defer p.up()
	t := p.cur()
	off := t.off
	switch t.kind {
	case tNumber, tText, tChar:
		p.next()
		e := p.make(LitExpr, off)
		e.Text = t.text
		switch t.kind {
		case tText:
			e.Lit = TextLit
		case tChar:
			e.Lit = CharLit
		}
		return e
	case tLifetime:
		p.next()
		p.want(":")
		e := p.operand()
		e.Label = t.text
		return e
	case tPunct:
		return p.signed(off)
	case tWord:
		if e := p.worded(off); e != nil {
			return e
		}
		return p.pathed(off)
	}
	p.fail("an expression")
	return nil
}

// signed reads operands that begin with a sign.
func (p *parser) signed(off int32) *Expr {
	switch {
	case p.eat("("):
		bare := p.bare
		p.bare = false
		e := &Expr{Kind: TupleExpr, Off: off}
		one := false
		for !p.eat(")") {
			e.Kids = append(e.Kids, p.expr())
			if one = !p.eat(","); one && !p.is(")") {
				p.fail("a list")
			}
		}
		p.bare = bare
		if one && len(e.Kids) == 1 {
			e.Kids[0].Off, e.Kids[0].End = off, p.end()
			return e.Kids[0]
		}
		e.End = p.end()
		return e
	case p.eat("["):
		bare := p.bare
		p.bare = false
		e := &Expr{Kind: ArrayExpr, Off: off}
		p.elements(e, "]")
		p.want("]")
		p.bare = bare
		e.End = p.end()
		return e
	case p.is("{"):
		return p.block()
	case p.is("|") || p.is("||"):
		return p.closure(off)
	case p.is("<"):
		e := &Expr{Kind: PathExpr, Off: off}
		e.Head, e.Path = p.qualified()
		e.End = p.end()
		return e
	case p.is("::"):
		return p.pathed(off)
	}
	p.fail("an expression")
	return nil
}

// elements reads those of an array, or one and how often it stands there.
func (p *parser) elements(e *Expr, closing string) {
	for !p.is(closing) && p.cur().kind != tEnd {
		e.Kids = append(e.Kids, p.expr())
		if len(e.Kids) == 1 && p.eat(";") {
			e.Text = ";"
			e.Kids = append(e.Kids, p.expr())
			return
		}
		if !p.eat(",") {
			return
		}
	}
}

func (p *parser) closure(off int32) *Expr {
	e := &Expr{Kind: ClosureExpr, Off: off}
	if !p.eat("||") {
		p.want("|")
		for !p.half("|") {
			par := Param{Pat: p.simple()}
			if p.eat(":") {
				par.Type = p.typ()
			}
			e.Params = append(e.Params, par)
			if !p.eat(",") && !(p.cur().kind == tPunct && strings.HasPrefix(p.cur().text, "|")) {
				p.fail("a parameter")
			}
		}
	}
	if p.eat("->") {
		e.Type = p.typ()
		e.Kids = []*Expr{p.block()}
	} else {
		e.Kids = []*Expr{p.expr()}
	}
	e.End = p.end()
	return e
}

// worded reads what begins with a word of the language; nil where none does.
func (p *parser) worded(off int32) *Expr {
	switch p.cur().text {
	case "true", "false":
		e := p.make(LitExpr, off)
		e.Lit, e.Text = BoolLit, p.next().text
		e.End = p.end()
		return e
	case "if":
		p.next()
		e := &Expr{Kind: IfExpr, Off: off, Kids: []*Expr{p.test(), p.block(), nil}}
		if p.eatWord("else") {
			if p.isWord("if") {
				e.Kids[2] = p.operand()
			} else {
				e.Kids[2] = p.block()
			}
		}
		e.End = p.end()
		return e
	case "let":
		p.next()
		e := &Expr{Kind: LetExpr, Off: off, Pat: p.pattern()}
		p.want("=")
		e.Kids = []*Expr{p.rest(p.unary(), 2)}
		e.End = p.end()
		return e
	case "match":
		p.next()
		e := &Expr{Kind: MatchExpr, Off: off, Kids: []*Expr{p.test()}}
		p.want("{")
		bare := p.bare
		p.bare = false
		p.inner()
		for !p.eat("}") {
			away := forTests(p.attributes())
			a := Arm{Pat: p.pattern()}
			if p.eatWord("if") {
				a.Guard = p.expr()
			}
			p.want("=>")
			block := p.is("{")
			if block {
				a.Body = p.block()
				if !p.is(",") && !p.is("}") && (p.is(".") || p.is("?")) {
					a.Body = p.rest(p.after(a.Body), 0)
				}
			} else {
				a.Body = p.expr()
			}
			if !away {
				e.Arms = append(e.Arms, a)
			}
			if !p.eat(",") && !p.is("}") && !blockLike(a.Body) {
				p.fail("an arm")
			}
		}
		p.bare = bare
		e.End = p.end()
		return e
	case "loop":
		p.next()
		e := &Expr{Kind: LoopExpr, Text: "loop", Off: off, Kids: []*Expr{p.block()}}
		e.End = p.end()
		return e
	case "while":
		p.next()
		e := &Expr{Kind: LoopExpr, Text: "while", Off: off, Kids: []*Expr{p.test(), p.block()}}
		e.End = p.end()
		return e
	case "for":
		p.next()
		e := &Expr{Kind: LoopExpr, Text: "for", Off: off, Pat: p.pattern()}
		if !p.eatWord("in") {
			p.fail("a loop")
		}
		e.Kids = []*Expr{p.test(), p.block()}
		e.End = p.end()
		return e
	case "unsafe", "const", "async", "move", "static":
		word := p.next().text
		move := word == "move"
		if p.eatWord("move") {
			move = true
		}
		var e *Expr
		if p.is("{") {
			e = p.block()
		} else {
			e = p.closure(off)
		}
		e.Text, e.Move, e.Off = word, move, off
		return e
	case "return", "break":
		word := p.next().text
		e := &Expr{Kind: ReturnExpr, Off: off}
		if word == "break" {
			e.Kind = BreakExpr
			if p.cur().kind == tLifetime {
				e.Label = p.next().text
			}
		}
		if t := p.cur(); !(t.kind == tEnd || t.kind == tPunct && (slices.Contains([]string{";", "}", ")", "]", ",", "=>"}, t.text) || t.text == "{" && p.bare)) {
			e.Kids = []*Expr{p.expr()}
		}
		e.End = p.end()
		return e
	case "continue":
		p.next()
		e := &Expr{Kind: ContinueExpr, Off: off}
		if p.cur().kind == tLifetime {
			e.Label = p.next().text
		}
		e.End = p.end()
		return e
	}
	return nil
}

// pathHere reads the names of a path without types.
func (p *parser) pathHere() (path []string) {
	p.eat("::")
	for {
		path = append(path, p.word())
		if !p.eat("::") {
			return path
		}
	}
}

// pathed reads a path and, where it is one, the macro or the structure that it names.
func (p *parser) pathed(off int32) *Expr {
	e := &Expr{Kind: PathExpr, Off: off}
	p.eat("::")
	for {
		if p.is("<") { // of the name before
			types := p.angled()
			if p.is("::") {
				e.Head = &Type{Path: slices.Clone(e.Path), Args: types}
			} else {
				e.Types = types
			}
		} else {
			e.Path = append(e.Path, p.word())
		}
		if !p.eat("::") {
			break
		}
	}
	e.End = p.end()
	switch {
	case p.is("!") && (p.signAt(1, "(") || p.signAt(1, "[") || p.signAt(1, "{")):
		return p.macro(e.Path)
	case p.is("{") && !p.bare && typeName(e.Path):
		return p.structure(e, off)
	}
	return e
}

// typeName reports whether a path may name a structure: its last name, or the one
// before it, begins with a capital.
func typeName(path []string) bool {
	last := path[len(path)-1]
	return last[0] >= 'A' && last[0] <= 'Z'
}

func (p *parser) structure(of *Expr, off int32) *Expr {
	e := &Expr{Kind: StructExpr, Off: off, Path: of.Path, Types: of.Types}
	p.want("{")
	for !p.eat("}") {
		p.attributes()
		if p.eat("..") {
			e.Kids = []*Expr{p.expr()}
			p.want("}")
			break
		}
		t := p.next()
		if t.kind != tWord && t.kind != tNumber {
			p.fail("a field")
		}
		f := FieldValue{Name: t.text}
		if p.eat(":") {
			f.Value = p.expr()
		} else {
			f.Value = &Expr{Kind: PathExpr, Path: []string{t.text}, Off: t.off, End: t.end}
		}
		e.Fields = append(e.Fields, f)
		if !p.eat(",") && !p.is("}") {
			p.fail("a field")
		}
	}
	e.End = p.end()
	return e
}

// macro reads the call of a macro: its sign comes next.
func (p *parser) macro(path []string) *Expr {
	off := p.cur().off
	for i := p.i - 1; i >= 0 && (p.toks[i].kind == tWord || p.toks[i].text == "::"); i-- {
		off = p.toks[i].off
		if p.toks[i].kind == tWord && (i == 0 || p.toks[i-1].text != "::") {
			break
		}
	}
	p.want("!")
	e := &Expr{Kind: MacroExpr, Path: path, Off: off}
	e.Raw = p.inBrackets()
	e.End = p.end()
	q := p.within(e.Raw)
	func() {
		defer func() {
			if r := recover(); r != nil {
				if _, ok := r.(fault); !ok {
					panic(r)
				}
				e.Kids, e.Branches, e.Pat = nil, nil, nil
			}
		}()
		switch path[len(path)-1] {
		case "matches", "assert_matches":
			e.Kids = []*Expr{q.expr()}
			q.want(",")
			e.Pat = q.pattern()
			if q.eatWord("if") {
				e.Kids = append(e.Kids, q.expr())
			}
		case "select":
			q.branches(e)
		default:
			q.elements(e, "\x00")
		}
		if q.cur().kind != tEnd && !q.eat(",") {
			q.fail("what a macro is given")
		}
	}()
	return e
}

// branches are those of select!.
func (p *parser) branches(e *Expr) {
	if p.isWord("biased") && p.signAt(1, ";") {
		p.i += 2
	}
	for p.cur().kind != tEnd {
		b := Branch{}
		if p.eatWord("else") {
			b.Pat = &Pat{}
		} else {
			b.Pat = p.pattern()
			p.want("=")
			b.From = p.expr()
			if p.eat(",") && p.eatWord("if") {
				p.expr()
			}
		}
		p.want("=>")
		if p.is("{") {
			b.Body = p.block()
		} else {
			b.Body = p.expr()
		}
		p.eat(",")
		e.Branches = append(e.Branches, b)
	}
}

// pattern reads a pattern with what stands between |.
func (p *parser) pattern() *Pat {
	p.down()
	defer p.up()
	p.eat("|")
	off := p.cur().off
	first := p.simple()
	if !p.is("|") {
		return first
	}
	or := &Pat{Kind: OrPat, Kids: []*Pat{first}, Off: off}
	for p.eat("|") {
		or.Kids = append(or.Kids, p.simple())
	}
	return or
}

// simple reads a pattern without |.
func (p *parser) simple() *Pat {
	p.down()
	defer p.up()
	t := p.cur()
	pt := &Pat{Off: t.off}
	switch {
	case p.isWord("_"):
		p.next()
		return pt
	case p.is("..") && !(p.at(1).kind == tNumber || p.at(1).kind == tChar):
		p.next()
		pt.Kind = RestPat
		return pt
	case p.half("&"):
		p.eatWord("mut")
		pt.Kind, pt.Kids = RefPat, []*Pat{p.simple()}
		return pt
	case p.eat("("):
		pt.Kind = TuplePat
		one := false
		for !p.eat(")") {
			pt.Kids = append(pt.Kids, p.pattern())
			if one = !p.eat(","); one && !p.is(")") {
				p.fail("a pattern")
			}
		}
		if one && len(pt.Kids) == 1 && pt.Kids[0].Kind != RestPat {
			return pt.Kids[0]
		}
		return pt
	case p.eat("["):
		pt.Kind = SlicePat
		for !p.eat("]") {
			pt.Kids = append(pt.Kids, p.pattern())
			if !p.eat(",") && !p.is("]") {
				p.fail("a pattern")
			}
		}
		return pt
	case t.kind == tNumber, t.kind == tText, t.kind == tChar, p.is("-"), p.isWord("true"), p.isWord("false"), p.is(".."), p.is("..="):
		return p.ranged(pt)
	case p.isWord("ref"), p.isWord("mut"), p.isWord("box"):
		p.next()
		pt.Mut = p.at(-1).text == "mut" || p.eatWord("mut")
		pt.Kind, pt.Name = NamePat, p.word()
		if p.eat("@") {
			pt.Kids = []*Pat{p.pattern()}
		}
		return pt
	case t.kind == tWord || p.is("::") || p.is("<"):
		if p.is("<") {
			p.fail("a pattern")
		}
		e := &Expr{Kind: PathExpr, Off: t.off}
		p.eat("::")
		for {
			if p.is("<") {
				p.angled()
			} else {
				e.Path = append(e.Path, p.word())
			}
			if !p.eat("::") {
				break
			}
		}
		e.End = p.end()
		pt.Path = e.Path
		switch {
		case p.is(".."), p.is("..="), p.is("..."):
			pt.Path = nil
			pt.Lo = e
			return p.ranged(pt)
		case p.eat("("):
			pt.Kind = TuplePat
			for !p.eat(")") {
				pt.Kids = append(pt.Kids, p.pattern())
				if !p.eat(",") && !p.is(")") {
					p.fail("a pattern")
				}
			}
		case p.is("{"):
			p.next()
			pt.Kind = StructPat
			for !p.eat("}") {
				p.attributes()
				if p.eat("..") {
					continue
				}
				p.eatWord("ref")
				mut := p.eatWord("mut")
				f := FieldPat{}
				if n := p.next(); n.kind == tWord || n.kind == tNumber {
					f.Name = n.text
				} else {
					p.fail("a pattern")
				}
				if p.eat(":") {
					f.Pat = p.pattern()
				} else {
					f.Pat = &Pat{Kind: NamePat, Name: f.Name, Mut: mut}
				}
				pt.Fields = append(pt.Fields, f)
				if !p.eat(",") && !p.is("}") {
					p.fail("a pattern")
				}
			}
		case p.is("!"):
			p.fail("a pattern")
		case len(e.Path) == 1 && (e.Path[0][0] < 'A' || e.Path[0][0] > 'Z'):
			pt.Kind, pt.Name, pt.Path = NamePat, e.Path[0], nil
			if p.eat("@") {
				pt.Kids = []*Pat{p.pattern()}
			}
		default:
			pt.Kind = PathPat
		}
		return pt
	}
	p.fail("a pattern")
	return nil
}

// ranged reads a literal, or a range of them.
func (p *parser) ranged(pt *Pat) *Pat {
	edge := func() *Expr {
		off := p.cur().off
		if p.eat("-") {
			e := p.make(UnaryExpr, off, p.operand())
			e.Text = "-"
			return e
		}
		return p.operand()
	}
	pt.Kind = LitPat
	if pt.Lo == nil && !p.is("..") && !p.is("..=") {
		pt.Lo = edge()
	}
	if p.is("..") || p.is("..=") || p.is("...") {
		pt.Kind, pt.Text = RangePat, p.next().text
		if t := p.cur(); t.kind == tNumber || t.kind == tChar || t.kind == tWord && t.text != "if" || p.is("-") {
			pt.Hi = edge()
		}
	}
	return pt
}
