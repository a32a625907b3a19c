package code

// pyStatement reads one Python statement; its layout comes as tokens.
func (r *reader) pyStatement() *Node {
	t := r.cur()
	n := &Node{Off: t.off}
	switch t.kind {
	case tNewline, tIndent, tDedent:
		r.pos++
		return nil
	case tPunct:
		switch t.text {
		case ";":
			r.pos++
			return nil
		case "@":
			decor := r.decorators()
			s := r.pyStatement()
			if s.Is(Func) || s.Is(Class) {
				s.Kids = append(s.Kids, decor...)
			}
			return s
		}
	case tName:
		switch t.text {
		case "import":
			return r.pyImport()
		case "from":
			if r.at(1).kind == tName || r.at(1).kind == tPunct && (r.at(1).text == "." || r.at(1).text == "...") {
				return r.pyFrom()
			}
		case "def":
			r.pos++
			return r.pyDef(t.off, 0)
		case "async":
			switch r.at(1).text {
			case "def":
				r.pos += 2
				return r.pyDef(t.off, Async)
			case "for", "with":
				r.pos++
				return r.pyStatement()
			}
		case "class":
			r.pos++
			n.Kind, n.Name = Class, r.cur().text
			r.pos++
			if r.isP("[") {
				r.skipBalanced()
			}
			bases := &Node{Kind: Array, Off: r.cur().off, End: r.cur().off}
			if r.isP("(") {
				c := &Node{Kind: Call, Kids: []*Node{nil}}
				r.arguments(c)
				bases.Kids = c.Kids[1:]
			}
			n.Kids = []*Node{r.done(bases), r.suite()}
			for _, m := range n.Kids[1].Kids {
				if m.Is(Func) {
					m.Flag |= Method
				}
			}
			return r.done(n)
		case "if", "elif":
			r.pos++
			n.Kind = If
			n.Kids = []*Node{r.expr(1), r.suite(), nil}
			if r.isN("elif") {
				n.Kids[2] = r.pyStatement()
			} else if r.eatN("else") {
				n.Kids[2] = r.suite()
			}
			return r.done(n)
		case "else", "except", "finally":
			for !r.isP(":") && r.cur().kind != tNewline && r.cur().kind != tEOF {
				r.pos++
			}
			return named(t.text, r.suite())
		case "while":
			r.pos++
			n.Kind = Loop
			n.Kids = []*Node{r.expr(1), r.suite()}
			return r.done(n)
		case "for":
			r.pos++
			n.Kind = Loop
			r.noIn = true
			target := r.sequence()
			r.noIn = false
			r.eatN("in")
			n.Kids = []*Node{target, r.sequence(), r.suite()}
			return r.done(n)
		case "try":
			r.pos++
			n.Kind = Try
			n.Kids = []*Node{r.suite()}
			for r.isN("except") || r.isN("finally") || r.isN("else") {
				name := r.cur().text
				what := ""
				if name == "except" {
					name = "catch"
					what = r.caught()
				}
				for !r.isP(":") && r.cur().kind != tNewline && r.cur().kind != tEOF {
					r.pos++
				}
				n.Kids = append(n.Kids, named(name, r.suite()).as(what))
			}
			return r.done(n)
		case "with":
			r.pos++
			n.Kind = With
			paren := r.isP("(") && r.withParens()
			if paren {
				r.pos++
			}
			for !r.isP(":") && r.cur().kind != tNewline && r.cur().kind != tEOF {
				start := r.pos
				e := r.expr(2)
				if r.eatN("as") {
					b := &Node{Kind: Bind, Off: r.cur().off}
					b.Kids = []*Node{r.operand(5), e}
					e = r.done(b)
				}
				if e != nil {
					n.Kids = append(n.Kids, e)
				}
				if !r.eatP(",") && r.pos == start {
					r.pos++
				}
			}
			n.Kids = append(n.Kids, r.suite())
			if c := n.Kids[0]; len(n.Kids) == 2 && c.Is(Call) && (c.Kid(0).Dotted() == "suppress" || c.Kid(0).Dotted() == "contextlib.suppress") {
				// What goes wrong in it is passed over.
				n.Kind, n.Kids = Try, []*Node{n.Kids[1], {Kind: Block, Name: "catch", Off: r.end(), End: r.end()}}
			}
			return r.done(n)
		case "return", "raise":
			r.pos++
			n.Kind = Return
			if t.text == "raise" {
				n.Kind = Throw
			}
			if k := r.cur().kind; k != tNewline && k != tEOF && !r.isP(";") {
				n.Kids = []*Node{r.sequence()}
			}
			r.done(n)
			r.lineEnd()
			return n
		case "pass":
			r.pos++
			return nil
		case "break", "continue":
			r.pos++
			n.Kind, n.Name = Jump, t.text
			return r.done(n)
		case "global", "nonlocal":
			n.Kind, n.Name = Jump, "global"
			for r.pos++; r.cur().kind == tName; r.pos++ {
				n.Kids = append(n.Kids, &Node{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end})
				if a := r.at(1); a.kind == tPunct && a.text == "," {
					r.pos++
				}
			}
			r.done(n)
			r.lineEnd()
			return n
		case "del", "assert":
			if t.text == "del" && r.at(1).kind == tName {
				off := r.cur().off
				r.pos++
				b := &Node{Kind: Block, Name: ",", Off: off}
				for {
					e := r.expr(1)
					if e == nil {
						break
					}
					gone := &Node{Kind: Unary, Name: "delete", Off: off, End: e.End, Kids: []*Node{e}}
					b.Kids = append(b.Kids, &Node{Kind: ExprStmt, Off: off, End: e.End, Kids: []*Node{gone}})
					if !r.eatP(",") {
						break
					}
				}
				r.lineEnd()
				return r.done(b)
			}
			if t.text == "del" {
				r.lineEnd()
				return nil
			}
			if r.at(1).kind != tPunct || r.at(1).text != "=" { // a call of what no program can name
				off := t.off
				r.pos++
				test := r.expr(1)
				if test == nil {
					r.lineEnd()
					return nil
				}
				call := r.done(&Node{Kind: Call, Off: off, Kids: []*Node{{Kind: Name, Name: Asserting, Off: off, End: t.end}, test}})
				r.lineEnd()
				return r.done(&Node{Kind: ExprStmt, Off: off, Kids: []*Node{call}})
			}
		case "match":
			if s := r.pyMatch(); s != nil {
				return s
			}
		case "type":
			if r.at(1).kind == tName && r.at(2).kind == tPunct && (r.at(2).text == "=" || r.at(2).text == "[") {
				r.lineEnd()
				return nil
			}
		}
	}
	e := r.sequence()
	if e == nil {
		r.lineEnd()
		return nil
	}
	if r.eatP(":") { // an annotation
		typ, more := r.annotation()
		n.Kind, n.Alias = Bind, typ
		n.Kids = []*Node{e, nil}
		if r.eatP("=") {
			n.Kids[1] = r.sequence()
		}
		if more != nil {
			n.Kids = append(n.Kids, more)
		}
		r.done(n)
		r.lineEnd()
		return n
	}
	if c := r.cur(); c.kind == tPunct && assignOps[c.text] {
		targets := []*Node{e}
		op := c.text
		var value *Node
		for r.cur().kind == tPunct && assignOps[r.cur().text] {
			r.pos++
			value = r.sequence()
			if r.isP("=") {
				targets = append(targets, value)
			}
		}
		if value == nil {
			value = &Node{Kind: Unknown, Off: r.end(), End: r.end()}
		}
		group := &Node{Kind: Block, Off: e.Off}
		for _, target := range targets {
			a := &Node{Kind: Assign, Name: op, Off: e.Off, Kids: []*Node{target, value}}
			group.Kids = append(group.Kids, &Node{Kind: ExprStmt, Off: e.Off, End: r.end(), Kids: []*Node{r.done(a)}})
		}
		r.lineEnd()
		if len(group.Kids) == 1 {
			return group.Kids[0]
		}
		group.End = value.End
		return group
	}
	n.Kind, n.Off = ExprStmt, e.Off
	n.Kids = []*Node{e}
	r.done(n)
	r.lineEnd()
	return n
}

// caught reads what an except catches, without moving on: the names with commas
// between, a colon, and the name that it is given.
func (r *reader) caught() string {
	list, name := "", ""
	for i := 1; i < 60; i++ {
		t := r.at(i)
		if t.kind == tPunct && t.text == ":" || t.kind == tNewline || t.kind == tEOF {
			break
		}
		switch {
		case t.kind == tName && t.text == "as":
			name = r.at(i + 1).text
			return list + ":" + name
		case t.kind == tName, t.kind == tPunct && (t.text == "." || t.text == ","):
			list += t.text
		}
	}
	return list + ":"
}

// lineEnd goes to the end of the logical line.
func (r *reader) lineEnd() {
	for {
		switch k := r.cur().kind; k {
		case tEOF, tDedent:
			return
		case tNewline:
			r.pos++
			return
		}
		if r.eatP(";") {
			return
		}
		r.pos++
	}
}

// withParens tells whether the bracket after `with` holds several items.
func (r *reader) withParens() bool {
	saved := r.pos
	defer func() { r.pos = saved }()
	r.skipBalanced()
	return r.isP(":")
}

// suite reads what follows a colon: an indented block or simple statements.
func (r *reader) suite() *Node {
	for !r.isP(":") && r.cur().kind != tNewline && r.cur().kind != tEOF {
		r.skipBalanced()
	}
	n := &Node{Kind: Block, Off: r.cur().off}
	r.eatP(":")
	if r.cur().kind != tNewline {
		for r.cur().kind != tEOF {
			start := r.pos
			if s := r.statement(); s != nil {
				n.Kids = append(n.Kids, s)
			}
			if r.pos > 0 && r.toks[r.pos-1].kind == tNewline || r.cur().kind == tDedent {
				break
			}
			if r.cur().kind == tNewline {
				r.pos++
				break
			}
			if r.pos == start {
				r.pos++
			}
		}
		return r.done(n)
	}
	for r.cur().kind == tNewline {
		r.pos++
	}
	if r.cur().kind != tIndent {
		return r.done(n)
	}
	r.pos++
	for r.cur().kind != tDedent && r.cur().kind != tEOF {
		start := r.pos
		if s := r.statement(); s != nil {
			n.Kids = append(n.Kids, s)
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.done(n)
	if r.cur().kind == tDedent {
		r.pos++
	}
	return n
}

func (r *reader) pyDef(off int32, flag uint16) *Node {
	n := &Node{Kind: Func, Off: off, Flag: flag, Name: r.cur().text}
	r.pos++
	if r.isP("[") {
		r.skipBalanced()
	}
	ps := &Node{Kind: Params, Off: r.cur().off}
	if r.eatP("(") {
		for !r.isP(")") && r.cur().kind != tEOF {
			start := r.pos
			p := &Node{Kind: Param, Off: r.cur().off, Kids: []*Node{nil, nil}}
			if r.eatP("*") || r.eatP("**") {
				p.Flag |= Rest
			}
			if r.cur().kind == tName {
				p.Name = r.cur().text
				r.pos++
			}
			var more *Node
			if r.eatP(":") {
				p.Alias, more = r.annotation()
			}
			if r.eatP("=") {
				p.Kids[0] = r.expr(1)
			}
			if more != nil {
				p.Kids = append(p.Kids, more)
			}
			if p.Name != "" {
				ps.Kids = append(ps.Kids, r.done(p))
			}
			if !r.eatP(",") && !r.isP(")") || r.pos == start {
				r.skipBalanced()
			}
		}
		r.eatP(")")
	}
	r.done(ps)
	if r.eatP("->") {
		r.expr(1)
	}
	n.Kids = []*Node{ps, r.suite()}
	return r.done(n)
}

// annotation reads a type: its name, without the None that it may be as well,
// and the first call among what Annotated says besides.
func (r *reader) annotation() (typ string, more *Node) {
	x := r.expr(1)
	for x != nil {
		switch name := x.Kid(0).Dotted(); {
		case x.Is(Binary) && x.Name == "|":
			x = x.Kid(0)
			continue
		case x.Is(Index) && (name == "Optional" || name == "typing.Optional"):
			x = x.Kid(1)
			continue
		case x.Is(Index) && (name == "Annotated" || name == "typing.Annotated" || name == "typing_extensions.Annotated"):
			list := x.Kids[1:]
			if len(list) == 1 && list[0].Is(Array) {
				list = list[0].Kids
			}
			for i, k := range list {
				if i > 0 && more == nil && k.Is(Call) {
					more = k
				}
			}
			if x = nil; len(list) > 0 {
				x = list[0]
			}
			continue
		case x.Is(String):
			return x.Name, more
		}
		return x.Dotted(), more
	}
	return "", more
}

func (r *reader) dottedName() string {
	name := ""
	for {
		t := r.cur()
		if t.kind == tPunct && (t.text == "." || t.text == "...") || t.kind == tName && t.text != "import" && t.text != "as" {
			name += t.text
			r.pos++
			continue
		}
		return name
	}
}

func (r *reader) pyImport() *Node {
	r.pos++
	group := &Node{Kind: Block, Off: r.cur().off}
	for {
		n := &Node{Kind: Import, Off: r.cur().off}
		n.Name = r.dottedName()
		if n.Name == "" {
			break
		}
		r.done(n)
		m := &Node{Kind: ImportName, Name: "*", Flag: TopName, Off: n.Off, End: n.End}
		m.Alias = n.Name
		for i := range len(n.Name) {
			if n.Name[i] == '.' {
				m.Alias = n.Name[:i]
				break
			}
		}
		if r.eatN("as") {
			m.Alias, m.Flag = r.cur().text, 0
			r.pos++
		}
		n.Kids = []*Node{m}
		group.Kids = append(group.Kids, n)
		if !r.eatP(",") {
			break
		}
	}
	r.lineEnd()
	if len(group.Kids) == 1 {
		return group.Kids[0]
	}
	return r.done(group)
}

func (r *reader) pyFrom() *Node {
	r.pos++
	n := &Node{Kind: Import, Off: r.cur().off}
	n.Name = r.dottedName()
	r.done(n)
	r.eatN("import")
	r.eatP("(")
	for {
		t := r.cur()
		if t.kind != tName && !r.isP("*") {
			break
		}
		r.pos++
		m := &Node{Kind: ImportName, Name: t.text, Alias: t.text, Off: t.off, End: t.end}
		if t.text == "*" {
			m.Flag |= Star
		}
		if r.eatN("as") {
			m.Alias = r.cur().text
			r.pos++
		}
		n.Kids = append(n.Kids, m)
		if !r.eatP(",") {
			break
		}
	}
	r.eatP(")")
	r.lineEnd()
	return n
}

// alternatives gives the values of a pattern of literals and dotted names.
func alternatives(n *Node) ([]*Node, bool) {
	switch {
	case n.Is(String), n.Is(Number), n.Is(True), n.Is(False), n.Is(Null), n.Is(Member):
		return []*Node{n}, true
	case n.Is(Binary) && n.Name == "|":
		a, ok1 := alternatives(n.Kid(0))
		b, ok2 := alternatives(n.Kid(1))
		return append(a, b...), ok1 && ok2
	}
	return nil, false
}

// pyMatch reads a match statement; nil when `match` is a plain name here.
func (r *reader) pyMatch() *Node {
	saved := r.pos
	n := &Node{Kind: Switch, Off: r.cur().off}
	if t := r.at(1); t.kind == tPunct && t.text != "(" && t.text != "[" && t.text != "{" && t.text != "-" || t.kind == tNewline {
		return nil
	}
	r.pos++
	subject := r.sequence()
	if !r.isP(":") || r.at(1).kind != tNewline {
		r.pos = saved
		return nil
	}
	n.Kids = []*Node{subject}
	r.pos += 2
	if r.cur().kind == tIndent {
		r.pos++
	}
	for r.isN("case") {
		r.pos++
		c := &Node{Kind: Case, Off: r.cur().off, Kids: []*Node{nil}}
		start := r.pos
		pattern := r.pyPatterns()
		if pattern == nil {
			r.pos = start
			r.expr(1)
		}
		var guard *Node
		if r.eatN("if") {
			guard = r.expr(1)
		}
		whole := r.isP(":") && pattern != nil
		for !r.isP(":") && r.cur().kind != tNewline && r.cur().kind != tEOF {
			r.skipBalanced()
		}
		switch tests, ok := alternatives(pattern); {
		case ok && whole && guard == nil:
			c.Kids = append(c.Kids, tests...)
		case whole && guard == nil && pattern.Is(Name): // takes everything
			if pattern.Name != "_" {
				c.Alias = pattern.Name
			}
		default:
			t := &Node{Kind: Unknown, Off: c.Off, End: r.end()}
			if whole {
				t.Name, t.Kids = Matched, []*Node{pattern}
				if guard != nil {
					t.Kids = append(t.Kids, guard)
				}
			}
			c.Kids = append(c.Kids, t)
		}
		c.Kids[0] = r.suite()
		n.Kids = append(n.Kids, r.done(c))
	}
	if r.cur().kind == tDedent {
		r.pos++
	}
	return r.done(n)
}

// Matched is the name of a case that takes what a pattern says: Kids[0] is the
// pattern, Kids[1] the condition behind `if` where there is one. In a pattern a Name
// takes what stands there, a Spread the rest, an Array is a sequence, an Object a
// mapping, a Call a class, the operators are "|" and "as" (Python 3.14 language
// reference, 8.6.4 "Patterns").
const Matched = "matched"

// Captured calls yield with each name that a pattern sets.
func Captured(pattern *Node, yield func(*Node)) {
	if pattern == nil {
		return
	}
	switch pattern.Kind {
	case Name:
		if pattern.Name != "_" {
			yield(pattern)
		}
	case Array, Spread, Binary:
		for _, k := range pattern.Kids {
			Captured(k, yield)
		}
	case Object:
		for _, k := range pattern.Kids {
			Captured(k.Kid(0), yield)
		}
	case Call:
		for _, k := range pattern.Kids[1:] {
			if k.Is(Keyword) {
				k = k.Kid(0)
			}
			Captured(k, yield)
		}
	}
}

// pyPatterns reads the pattern of a case; nil where it is not understood.
func (r *reader) pyPatterns() *Node {
	first := r.pyPattern()
	if first == nil || !r.isP(",") && !first.Is(Spread) {
		return first
	}
	list := &Node{Kind: Array, Off: first.Off, Kids: []*Node{first}}
	for r.eatP(",") && !r.isP(":") && !r.isN("if") {
		p := r.pyPattern()
		if p == nil {
			return nil
		}
		list.Kids = append(list.Kids, p)
	}
	return r.done(list)
}

func (r *reader) pyPattern() *Node {
	if !r.enter() {
		r.leave()
		return nil
	}
	defer r.leave()
	p := r.pyClosed()
	for p != nil && r.eatP("|") {
		q := r.pyClosed()
		if q == nil {
			return nil
		}
		p = r.done(binary("|", p.Off, p, q))
	}
	if p != nil && r.eatN("as") {
		t := r.cur()
		if t.kind != tName {
			return nil
		}
		r.pos++
		p = r.done(binary("as", p.Off, p, &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}))
	}
	return p
}

func (r *reader) pyClosed() *Node {
	t := r.cur()
	n := &Node{Off: t.off}
	list := func(end string, read func() *Node) bool {
		for !r.isP(end) {
			k := read()
			if k == nil {
				return false
			}
			n.Kids = append(n.Kids, k)
			if !r.eatP(",") && !r.isP(end) {
				return false
			}
		}
		return r.eatP(end)
	}
	switch {
	case t.kind == tPunct && (t.text == "*" || t.text == "**"):
		r.pos++
		name := r.cur()
		if name.kind != tName {
			return nil
		}
		r.pos++
		n.Kind, n.Kids = Spread, []*Node{{Kind: Name, Name: name.text, Off: name.off, End: name.end}}
	case r.eatP("("):
		n.Kind = Array
		if !list(")", r.pyPattern) {
			return nil
		}
		if len(n.Kids) == 1 && r.at(-2).text != "," && !n.Kids[0].Is(Spread) { // only brackets
			return n.Kids[0]
		}
	case r.eatP("["):
		n.Kind = Array
		if !list("]", r.pyPattern) {
			return nil
		}
	case r.eatP("{"):
		n.Kind = Object
		if !list("}", func() *Node {
			if r.isP("**") {
				return r.pyClosed()
			}
			k := r.unary()
			if k == nil || !r.eatP(":") {
				return nil
			}
			v := r.pyPattern()
			if v == nil {
				return nil
			}
			if k.Is(String) {
				return r.done(&Node{Kind: Pair, Name: k.Name, Off: k.Off, Kids: []*Node{v}})
			}
			return r.done(&Node{Kind: Pair, Off: k.Off, Kids: []*Node{v, k}})
		}) {
			return nil
		}
	case t.kind == tName && r.at(1).kind == tPunct && (r.at(1).text == "." || r.at(1).text == "("), t.kind == tName && (t.text == "None" || t.text == "True" || t.text == "False"):
		var name *Node
		if r.pos++; t.text == "None" || t.text == "True" || t.text == "False" {
			n.Kind = map[string]Kind{"None": Null, "True": True, "False": False}[t.text]
			return r.done(n)
		}
		name = r.done(&Node{Kind: Name, Name: t.text, Off: t.off})
		for r.isP(".") && r.at(1).kind == tName {
			r.pos += 2
			name = r.done(&Node{Kind: Member, Name: r.at(-1).text, Off: t.off, Kids: []*Node{name}})
		}
		if !r.eatP("(") {
			return name
		}
		n.Kind, n.Kids = Call, []*Node{name}
		if !list(")", func() *Node {
			if k := r.cur(); k.kind == tName && r.at(1).kind == tPunct && r.at(1).text == "=" {
				r.pos += 2
				v := r.pyPattern()
				if v == nil {
					return nil
				}
				return r.done(&Node{Kind: Keyword, Name: k.text, Off: k.off, Kids: []*Node{v}})
			}
			return r.pyPattern()
		}) {
			return nil
		}
	case t.kind == tName:
		r.pos++
		n.Kind, n.Name = Name, t.text
	default:
		e := r.unary() // a literal, with a sign
		switch {
		case e.Is(String), e.Is(Number), e.Is(Unary) && e.Kid(0).Is(Number):
			return e
		}
		return nil
	}
	return r.done(n)
}
