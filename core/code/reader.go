package code

import (
	"slices"
	"strings"
)

// reader is the one reader above all lexers.
type reader struct {
	lang  Language
	src   []byte
	toks  []tok
	pos   int
	depth int
	bare  map[int32]bool // offsets of what was first read as something that it is not
	noDo  bool           // a do belongs to a call further out (Ruby)
	noIn  bool           // `in` ends an expression (heads of for loops)
}

const maxReaderDepth = 300

func parse(lang Language, src []byte, toks []tok) *Node {
	r := &reader{lang: lang, src: src, toks: toks}
	body := &Node{Kind: Block, End: int32(len(src))}
	for r.cur().kind != tEOF {
		start := r.pos
		if s := r.statement(); s != nil {
			body.Kids = append(body.Kids, s)
		}
		if r.pos == start {
			r.pos++ // always go on
		}
	}
	return body
}

func (r *reader) py() bool { return r.lang == Python }

func (r *reader) cur() *tok { return r.at(0) }

func (r *reader) at(n int) *tok {
	if r.pos+n < len(r.toks) && r.pos+n >= 0 {
		return &r.toks[r.pos+n]
	}
	return &r.toks[len(r.toks)-1]
}

func (r *reader) isP(s string) bool { t := r.cur(); return t.kind == tPunct && t.text == s }
func (r *reader) isN(s string) bool { t := r.cur(); return t.kind == tName && t.text == s }

func (r *reader) eatP(s string) bool {
	if r.isP(s) {
		r.pos++
		return true
	}
	return false
}

func (r *reader) eatN(s string) bool {
	if r.isN(s) {
		r.pos++
		return true
	}
	return false
}

// end is where the last token that was read ends.
func (r *reader) end() int32 {
	if r.pos == 0 {
		return 0
	}
	return r.toks[min(r.pos, len(r.toks))-1].end
}

func (r *reader) done(n *Node) *Node { n.End = max(n.Off, r.end()); return n }

func (r *reader) enter() bool { r.depth++; return r.depth < maxReaderDepth }
func (r *reader) leave()      { r.depth-- }

// statement reads one statement; nil where there is nothing to keep.
func (r *reader) statement() *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	if r.py() {
		return r.pyStatement()
	}
	return r.jsStatement()
}

// skipBalanced steps over one token, or over a bracketed stretch.
func (r *reader) skipBalanced() {
	depth := 0
	for {
		t := r.cur()
		if t.kind == tEOF {
			return
		}
		r.pos++
		if t.kind == tPunct {
			switch t.text {
			case "(", "[", "{":
				depth++
			case ")", "]", "}":
				depth--
			}
		}
		if depth <= 0 {
			return
		}
	}
}

// ---- JavaScript and TypeScript

func (r *reader) semicolon() {
	r.eatP(";")
}

var jsModifiers = map[string]bool{"declare": true, "abstract": true, "async": true, "public": true, "private": true, "protected": true,
	"readonly": true, "static": true, "override": true, "accessor": true}

func (r *reader) jsStatement() *Node {
	t := r.cur()
	n := &Node{Off: t.off}
	if t.kind == tPunct {
		switch t.text {
		case ";":
			r.pos++
			return nil
		case "{":
			return r.block()
		case "@":
			decor := r.decorators()
			if s := r.jsStatement(); s != nil {
				d := s
				if d.Is(Export) {
					d = d.Kid(0)
				}
				if d.Is(Class) || d.Is(Func) {
					d.Kids = append(d.Kids, decor...)
				}
				return s
			}
			return nil
		}
	}
	if t.kind == tName {
		next := r.at(1)
		switch t.text {
		case "import":
			if next.kind == tPunct && (next.text == "(" || next.text == ".") {
				break
			}
			return r.jsImport()
		case "export":
			return r.jsExport()
		case "const", "let", "var", "using":
			if t.text == "const" && next.kind == tName && next.text == "enum" {
				r.pos++
				return r.jsStatement()
			}
			if next.kind == tName || next.kind == tPunct && (next.text == "{" || next.text == "[") {
				return r.jsDeclaration()
			}
		case "function":
			r.pos++
			f := r.function(t.off, 0)
			return f
		case "async":
			if next.kind == tName && next.text == "function" && !next.nl {
				r.pos += 2
				return r.function(t.off, Async)
			}
		case "class":
			return r.jsClass()
		case "abstract":
			if next.kind == tName && next.text == "class" {
				r.pos++
				return r.jsClass()
			}
		case "interface":
			if next.kind == tName && !next.nl {
				for r.cur().kind != tEOF && !r.isP("{") {
					r.pos++
				}
				r.skipBalanced()
				return nil
			}
		case "type":
			if next.kind == tName && !next.nl && r.at(2).kind == tPunct && (r.at(2).text == "=" || r.at(2).text == "<") {
				r.pos += 2
				if r.isP("<") {
					r.typeArgs()
				}
				if r.eatP("=") {
					r.skipType(true)
				}
				r.semicolon()
				return nil
			}
		case "enum":
			if next.kind == tName {
				r.pos += 2
				n.Kind, n.Name = Bind, "const"
				n.Kids = []*Node{{Kind: Name, Name: next.text, Off: next.off, End: next.end}, r.object()}
				return r.done(n)
			}
		case "declare", "namespace", "module":
			if t.text == "namespace" && next.kind == tName && !next.nl {
				r.pos++
				return r.jsNamespace(t.off)
			}
			if next.kind == tName && !next.nl || t.text == "module" && next.kind == tString {
				for r.cur().kind != tEOF && !r.isP("{") && !r.isP(";") && (r.pos == 0 || !r.cur().nl || r.at(-1).text == t.text) {
					r.pos++
				}
				if r.isP("{") {
					r.skipBalanced()
				}
				return nil
			}
		case "if":
			if next.text == "(" {
				return r.jsIf()
			}
		case "for", "while", "with", "switch":
			if next.kind == tPunct && next.text == "(" || t.text == "for" && next.text == "await" {
				return r.jsLoop()
			}
		case "do":
			if next.kind == tPunct && next.text == "{" {
				r.pos++
				n.Kind, n.Name = Loop, "do"
				body, test := r.block(), &Node{Kind: Undefined, Off: r.end(), End: r.end()}
				if r.eatN("while") {
					if e := r.paren(); e != nil {
						test = e
					}
				}
				n.Kids = []*Node{test, body}
				return r.done(n)
			}
			if next.kind == tName { // one statement
				r.pos++
				if body := r.statement(); body != nil && r.eatN("while") {
					test := r.paren()
					if test == nil {
						test = &Node{Kind: Undefined, Off: r.end(), End: r.end()}
					}
					n.Kind, n.Name, n.Kids = Loop, "do", []*Node{test, body}
					r.semicolon()
					return r.done(n)
				}
			}
		case "try":
			if next.kind == tPunct && next.text == "{" {
				r.pos++
				n.Kind = Try
				n.Kids = []*Node{r.block()}
				if r.eatN("catch") {
					what := ""
					if r.isP("(") {
						if t := r.at(1); t.kind == tName {
							what = ":" + t.text
						}
						r.skipBalanced()
					}
					n.Kids = append(n.Kids, named("catch", r.block()).as(what))
				}
				if r.eatN("finally") {
					n.Kids = append(n.Kids, named("finally", r.block()))
				}
				return r.done(n)
			}
		case "return", "throw":
			n.Kind = Return
			if t.text == "throw" {
				n.Kind = Throw
			}
			r.pos++
			if c := r.cur(); !c.nl && c.kind != tEOF && !r.isP(";") && !r.isP("}") {
				n.Kids = []*Node{r.sequence()}
			}
			r.done(n)
			r.semicolon()
			return n
		case "break", "continue", "debugger":
			r.pos++
			n.Kind, n.Name = Jump, t.text
			if c := r.cur(); !c.nl && c.kind == tName {
				n.Alias = c.text
				r.pos++
			}
			r.done(n)
			r.semicolon()
			if t.text == "debugger" {
				return nil
			}
			return n
		case "else", "catch", "finally", "case", "default":
			if t.text == "case" || t.text == "default" && next.kind == tPunct && next.text == ":" {
				r.pos++
				if t.text == "case" {
					r.sequence()
				}
				r.eatP(":")
				return nil
			}
			r.pos++
			return nil
		}
	}
	if next := r.at(1); t.kind == tName && next.kind == tPunct && next.text == ":" && !r.noIn { // a label
		r.pos += 2
		if s := r.jsStatement(); s.Is(Loop) {
			return &Node{Kind: Block, Alias: t.text, Kids: []*Node{s}, Off: t.off, End: s.End}
		} else if s != nil {
			return s
		}
		return nil
	}
	e := r.sequence()
	r.semicolon()
	if e == nil {
		return nil
	}
	return &Node{Kind: ExprStmt, Kids: []*Node{e}, Off: e.Off, End: e.End}
}

func (r *reader) block() *Node {
	n := &Node{Kind: Block, Off: r.cur().off}
	if !r.eatP("{") {
		if s := r.statement(); s != nil {
			n.Kids = append(n.Kids, s)
		}
		return r.done(n)
	}
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		if s := r.statement(); s != nil {
			n.Kids = append(n.Kids, s)
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	return r.done(n)
}

func (r *reader) paren() *Node {
	if !r.eatP("(") {
		return nil
	}
	saved := r.noIn
	r.noIn = false
	e := r.sequence()
	r.noIn = saved
	for !r.isP(")") && r.cur().kind != tEOF && !r.isP("}") {
		r.skipBalanced()
	}
	r.eatP(")")
	return e
}

func (r *reader) jsIf() *Node {
	n := &Node{Kind: If, Off: r.cur().off}
	r.pos++
	n.Kids = []*Node{r.paren(), r.block(), nil}
	r.eatP(";")
	if r.eatN("else") {
		if r.isN("if") {
			n.Kids[2] = r.jsIf()
		} else {
			n.Kids[2] = r.block()
		}
	}
	return r.done(n)
}

func (r *reader) jsLoop() *Node {
	n := &Node{Kind: Loop, Off: r.cur().off}
	word := r.cur().text
	r.pos++
	r.eatN("await")
	if word == "switch" {
		n.Kind = Switch
		n.Kids = []*Node{r.paren()}
		r.jsCases(n)
		return r.done(n)
	}
	if word != "for" {
		n.Kids = []*Node{r.paren(), r.block()}
		return r.done(n)
	}
	r.eatP("(")
	r.noIn = true
	part, none := 0, func() *Node { return &Node{Kind: Block, Off: r.end(), End: r.end()} }
	for !r.isP(")") && r.cur().kind != tEOF {
		start := r.pos
		if r.isN("const") || r.isN("let") || r.isN("var") {
			d := r.jsDeclaration()
			if d.Is(Bind) && d.Kid(1) == nil && (r.isN("of") || r.isN("in")) {
				d.Name = "loop"
			}
			n.Kids = append(n.Kids, d)
		} else if r.isN("of") || r.isN("in") {
			n.Name = r.cur().text
			r.pos++
		} else if r.eatP(";") {
			n.Name = "for"
			if part++; len(n.Kids) < part {
				n.Kids = append(n.Kids, none())
			}
		} else {
			n.Kids = append(n.Kids, r.sequence())
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.noIn = false
	r.eatP(")")
	for n.Name == "for" && len(n.Kids) < 3 {
		n.Kids = append(n.Kids, none())
	}
	n.Kids = append(n.Kids, r.block())
	return r.done(n)
}

func named(name string, n *Node) *Node {
	n.Name = name
	return n
}

// jsCases reads the cases of a switch. A case that does not leave the switch
// runs into the next one, which then stands for both.
func (r *reader) jsCases(n *Node) {
	if !r.eatP("{") {
		return
	}
	var tests []*Node
	isDefault := false
	body := &Node{Kind: Block, Off: r.cur().off}
	left := false
	flush := func() {
		if len(body.Kids) == 0 && !left {
			return // case 'a': case 'b': …
		}
		c := &Node{Kind: Case, Kids: []*Node{r.done(body)}, Off: body.Off}
		if !isDefault {
			c.Kids = append(c.Kids, tests...)
		}
		n.Kids = append(n.Kids, r.done(c))
		if left || leaves(body) {
			tests, isDefault = nil, false
		}
		body, left = &Node{Kind: Block, Off: r.cur().off}, false
	}
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		switch nx := r.at(1); {
		case r.isN("case"):
			flush()
			r.pos++
			if t := r.expr(1); t != nil {
				tests = append(tests, t)
			}
			r.eatP(":")
		case r.isN("default") && nx.kind == tPunct && nx.text == ":":
			flush()
			r.pos += 2
			isDefault = true
		default:
			left = left || r.isN("break")
			if s := r.statement(); s != nil {
				body.Kids = append(body.Kids, s)
				if s.Is(Block) && r.pos >= 2 { // case 'a': { …; break }
					left = left || breaks(r.toks[start:r.pos])
				}
			}
		}
		if r.pos == start {
			r.pos++
		}
	}
	flush()
	r.eatP("}")
}

// breaks reports whether the last statement of a block in braces is a break.
func breaks(toks []tok) bool {
	for i := len(toks) - 2; i >= 0 && i >= len(toks)-3; i-- {
		if toks[i].kind == tName && toks[i].text == "break" {
			return true
		}
	}
	return false
}

func (r *reader) jsDeclaration() *Node {
	word := r.cur().text
	off := r.cur().off
	r.pos++
	group := &Node{Kind: Block, Off: off}
	for {
		b := &Node{Kind: Bind, Name: word, Off: r.cur().off}
		target := r.target()
		if target == nil {
			break
		}
		r.eatP("!")
		if r.eatP(":") {
			r.skipType(false)
		}
		b.Kids = []*Node{target, nil}
		if r.eatP("=") {
			b.Kids[1] = r.expr(1)
		}
		group.Kids = append(group.Kids, r.done(b))
		if !r.eatP(",") {
			break
		}
	}
	if !r.noIn {
		r.semicolon()
	}
	if len(group.Kids) == 1 {
		return group.Kids[0]
	}
	return r.done(group)
}

// target reads a name or a destructuring pattern.
func (r *reader) target() *Node {
	switch t := r.cur(); {
	case t.kind == tName:
		r.pos++
		return &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}
	case r.isP("{"):
		return r.object()
	case r.isP("["):
		return r.primary()
	}
	return nil
}

func (r *reader) jsImport() *Node {
	n := &Node{Kind: Import, Off: r.cur().off}
	r.pos++
	if r.isN("type") && (r.at(1).kind == tName && r.at(1).text != "from" || r.at(1).kind == tPunct && (r.at(1).text == "{" || r.at(1).text == "*")) {
		n.Flag |= TypeOnly
		r.pos++
	}
	if t := r.cur(); t.kind == tString {
		n.Name = t.text
		r.pos++
		n.Off, n.End = t.off, t.end
		r.semicolon()
		return n
	}
	types, values := 0, 0
	for r.cur().kind != tEOF && !r.isN("from") && r.cur().kind != tString {
		t := r.cur()
		switch {
		case r.isP("{"):
			r.pos++
			for !r.isP("}") && r.cur().kind != tEOF {
				m := &Node{Kind: ImportName, Off: r.cur().off}
				if r.isN("type") && r.at(1).kind == tName && r.at(1).text != "as" {
					r.pos++
					m.Flag |= TypeOnly
					types++
				} else {
					values++
				}
				m.Name = r.cur().text
				m.Alias = m.Name
				r.pos++
				if r.eatN("as") {
					m.Alias = r.cur().text
					r.pos++
				}
				n.Kids = append(n.Kids, r.done(m))
				if !r.eatP(",") && !r.isP("}") {
					r.pos++
				}
			}
			r.eatP("}")
		case r.isP("*"):
			r.pos++
			r.eatN("as")
			n.Kids = append(n.Kids, &Node{Kind: ImportName, Name: "*", Alias: r.cur().text, Off: t.off, End: r.cur().end})
			values++
			r.pos++
		case t.kind == tName:
			r.pos++
			if r.isP("=") { // import x = require("m")
				r.pos++
				b := &Node{Kind: Bind, Name: "const", Off: t.off}
				b.Kids = []*Node{{Kind: Name, Name: t.text, Off: t.off, End: t.end}, r.expr(1)}
				r.semicolon()
				return r.done(b)
			}
			n.Kids = append(n.Kids, &Node{Kind: ImportName, Name: "default", Alias: t.text, Off: t.off, End: t.end})
			values++
		default:
			r.pos++
		}
		if r.isP(",") {
			r.pos++
		}
	}
	if types > 0 && values == 0 {
		n.Flag |= TypeOnly
	}
	r.eatN("from")
	r.moduleName(n)
	return n
}

// moduleName reads the string after `from`; the node's place is that string.
func (r *reader) moduleName(n *Node) {
	if t := r.cur(); t.kind == tString {
		n.Name = t.text
		n.Off, n.End = t.off, t.end
		r.pos++
	}
	if (r.isN("with") || r.isN("assert")) && r.at(1).text == "{" {
		r.pos++
		r.skipBalanced()
	}
	r.semicolon()
}

func (r *reader) jsExport() *Node {
	n := &Node{Kind: Export, Off: r.cur().off}
	r.pos++
	switch {
	case r.isN("default"):
		r.pos++
		n.Name = "default"
		switch {
		case r.isN("function") || r.isN("class") || r.isN("async") && r.at(1).text == "function" || r.isN("abstract") || r.isP("@"):
			n.Kids = []*Node{r.jsStatement()}
		case r.isN("interface"):
			r.jsStatement()
			return nil
		default:
			n.Kids = []*Node{r.expr(1)}
			r.semicolon()
		}
		return r.done(n)
	case r.isP("*"):
		r.pos++
		n.Kind, n.Name = Import, ""
		n.Flag = Exported
		alias := ""
		if r.eatN("as") {
			alias = r.cur().text
			r.pos++
		}
		n.Kids = []*Node{{Kind: ImportName, Name: "*", Alias: alias}}
		r.eatN("from")
		r.moduleName(n)
		return n
	case r.isN("type") && r.at(1).kind == tName && r.at(1).text != "from", r.isN("interface"), r.isN("declare"):
		return r.jsStatement()
	case r.isN("type") && r.at(1).text == "{", r.isP("{"):
		if r.eatN("type") {
			n.Flag |= TypeOnly
		}
		r.pos++
		for !r.isP("}") && r.cur().kind != tEOF {
			m := &Node{Kind: ImportName, Off: r.cur().off}
			if r.isN("type") && r.at(1).kind == tName && r.at(1).text != "as" {
				r.pos++
			}
			m.Name = r.cur().text
			m.Alias = m.Name
			r.pos++
			if r.eatN("as") {
				m.Alias = r.cur().text
				r.pos++
			}
			n.Kids = append(n.Kids, r.done(m))
			if !r.eatP(",") && !r.isP("}") {
				r.pos++
			}
		}
		r.eatP("}")
		if r.eatN("from") {
			n.Kind = Import
			n.Flag |= Exported
			r.moduleName(n)
			return n
		}
		r.semicolon()
		return r.done(n)
	case r.isP("="): // export = x
		r.pos++
		n.Name = "="
		n.Kids = []*Node{r.expr(1)}
		r.semicolon()
		return r.done(n)
	}
	s := r.jsStatement()
	if s == nil {
		return nil
	}
	mark := func(d *Node) { d.Flag |= Exported }
	if s.Is(Block) {
		for _, k := range s.Kids {
			mark(k)
		}
	} else {
		mark(s)
	}
	return s
}

// jsNamespace reads a namespace of TypeScript from its name on, as what it is
// compiled to: a constant that holds what a function gives, run at once (TypeScript
// handbook, "Namespaces").
func (r *reader) jsNamespace(off int32) *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	name := &Node{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}
	r.pos++
	var body *Node
	switch {
	case r.eatP(".") && r.cur().kind == tName:
		inner := r.jsNamespace(r.cur().off)
		if inner == nil {
			return nil
		}
		inner.Flag |= Exported
		body = &Node{Kind: Block, Off: inner.Off, End: inner.End, Kids: []*Node{inner}}
	case r.isP("{"):
		body = r.block()
	default:
		return nil
	}
	given := &Node{Kind: Object, Off: body.End, End: body.End}
	give := func(k *Node) {
		n := &Node{Kind: Name, Name: k.Name, Off: k.Off, End: k.End}
		given.Kids = append(given.Kids, &Node{Kind: Pair, Name: k.Name, Off: k.Off, End: k.End, Kids: []*Node{n}})
	}
	for i := 0; i < len(body.Kids); i++ {
		k := body.Kids[i]
		if k.Is(Block) && len(k.Kids) > 0 && k.Kids[0].Is(Bind) {
			body.Kids = slices.Replace(body.Kids, i, i+1, k.Kids...)
			k = body.Kids[i]
		}
		if k.Flag&Exported == 0 || k.Is(Import) {
			continue
		}
		k.Flag &^= Exported
		switch k.Kind {
		case Func, Class:
			give(k)
		case Bind:
			k.Kid(0).Walk(func(x *Node) bool {
				if x.Is(Name) {
					give(x)
				}
				return true
			})
		}
	}
	body.Kids = append(body.Kids, &Node{Kind: Return, Off: body.End, End: body.End, Kids: []*Node{given}})
	fn := r.done(&Node{Kind: Func, Off: body.Off, Kids: []*Node{{Kind: Params, Off: body.Off, End: body.Off}, body}})
	made := r.done(&Node{Kind: Call, Name: Namespace, Off: body.Off, Kids: []*Node{fn}})
	return r.done(&Node{Kind: Bind, Name: "const", Off: off, Kids: []*Node{name, made}})
}

// function reads from the name or the parameters on; `function` is read.
func (r *reader) function(off int32, flag uint16) *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	n := &Node{Kind: Func, Off: off, Flag: flag}
	r.eatP("*")
	if r.cur().kind == tName {
		n.Name = r.cur().text
		r.pos++
	}
	if r.isP("<") {
		r.typeArgs()
	}
	n.Kids = []*Node{r.params(), nil}
	if r.eatP(":") {
		r.skipType(false)
	}
	if r.isP("{") {
		saved := r.noIn
		r.noIn = false
		n.Kids[1] = r.block()
		r.noIn = saved
	} else {
		n.Kids[1] = &Node{Kind: Block, Off: r.end(), End: r.end()}
		r.semicolon()
	}
	return r.done(n)
}

func (r *reader) params() *Node {
	n := &Node{Kind: Params, Off: r.cur().off}
	if !r.eatP("(") {
		return n
	}
	for !r.isP(")") && r.cur().kind != tEOF {
		start := r.pos
		p := &Node{Kind: Param, Off: r.cur().off, Kids: []*Node{nil, nil}}
		if r.isP("@") {
			r.decorators()
		}
		for r.cur().kind == tName && jsModifiers[r.cur().text] && r.at(1).kind == tName {
			p.Flag |= Exported // a parameter property of a TypeScript constructor
			r.pos++
		}
		if r.eatP("...") {
			p.Flag |= Rest
		}
		if t := r.cur(); t.kind == tName {
			p.Name = t.text
			r.pos++
		} else if r.isP("{") || r.isP("[") {
			p.Kids[1] = r.target()
		}
		r.eatP("?")
		if r.eatP(":") {
			r.skipType(false)
		}
		if r.eatP("=") {
			p.Kids[0] = r.expr(1)
		}
		n.Kids = append(n.Kids, r.done(p))
		if !r.eatP(",") && !r.isP(")") || r.pos == start {
			r.skipBalanced()
		}
	}
	r.eatP(")")
	return r.done(n)
}

func (r *reader) decorators() []*Node {
	var list []*Node
	for r.isP("@") {
		r.pos++
		if e := r.postfix(r.primary()); e != nil {
			list = append(list, e)
		}
		for r.cur().kind == tNewline {
			r.pos++
		}
	}
	return list
}

func (r *reader) jsClass() *Node {
	n := &Node{Kind: Class, Off: r.cur().off}
	r.pos++
	if r.cur().kind == tName && !r.isN("extends") && !r.isN("implements") {
		n.Name = r.cur().text
		r.pos++
	}
	if r.isP("<") {
		r.typeArgs()
	}
	bases := &Node{Kind: Array, Off: r.cur().off, End: r.cur().off}
	if r.eatN("extends") {
		if e := r.postfix(r.primary()); e != nil {
			bases.Kids = append(bases.Kids, e)
		}
		if r.isP("<") {
			r.typeArgs()
		}
	}
	for r.cur().kind != tEOF && !r.isP("{") {
		r.pos++
	}
	body := &Node{Kind: Block, Off: r.cur().off}
	n.Kids = []*Node{bases, body}
	r.eatP("{")
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		r.classMember(body)
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	r.done(body)
	return r.done(n)
}

func (r *reader) classMember(body *Node) {
	off := r.cur().off
	var decor []*Node
	if r.isP("@") {
		decor = r.decorators()
	}
	var flag uint16 = Method
	setter := false
	for r.cur().kind == tName && (jsModifiers[r.cur().text] || r.cur().text == "get" || r.cur().text == "set") {
		nx := r.at(1)
		if nx.kind == tPunct && strings.Contains("(=;:?!}<", nx.text) {
			break
		}
		switch r.cur().text {
		case "static":
			flag |= Static
		case "async":
			flag |= Async
		case "get":
			flag |= Getter
		case "set":
			setter = true
		}
		r.pos++
		if r.isP("{") && flag&Static != 0 {
			body.Kids = append(body.Kids, r.block())
			return
		}
	}
	r.eatP("*")
	name := ""
	nameTok := r.cur()
	switch t := r.cur(); {
	case t.kind == tName || t.kind == tString || t.kind == tNumber:
		name = t.text
		r.pos++
	case r.isP("["):
		if o, p, n, e := r.at(1), r.at(2), r.at(3), r.at(4); o.text == "Symbol" && p.text == "." && n.kind == tName && e.text == "]" {
			name = "\x00@Symbol." + n.text
		}
		r.skipBalanced()
	default:
		r.skipBalanced()
		return
	}
	if !r.eatP("?") {
		r.eatP("!")
	}
	if r.isP("<") {
		r.typeArgs()
	}
	if r.isP("(") {
		f := r.function(off, flag)
		if f != nil {
			if f.Name = name; setter {
				f.Name = Setter + name
			}
			f.Kids = append(f.Kids, decor...)
			body.Kids = append(body.Kids, f)
		}
		return
	}
	b := &Node{Kind: Bind, Off: nameTok.off, Flag: flag &^ Method}
	b.Kids = []*Node{{Kind: Name, Name: name, Off: nameTok.off, End: nameTok.end}, nil}
	if r.eatP(":") {
		r.skipType(false)
	}
	if r.eatP("=") {
		b.Kids[1] = r.expr(1)
	}
	r.semicolon()
	b.Kids = append(b.Kids, decor...)
	body.Kids = append(body.Kids, r.done(b))
}

// another goes back to start, where what was read is something else, and keeps
// that in mind: what stands in it would be read twice as often at each level.
func (r *reader) another(start int) {
	r.pos = start
	if r.bare == nil {
		r.bare = map[int32]bool{}
	}
	r.bare[r.cur().off] = true
}

// part makes the reader of the tokens inside a text.
func (r *reader) part(toks []tok) reader {
	if r.bare == nil {
		r.bare = map[int32]bool{}
	}
	return reader{lang: r.lang, src: r.src, toks: toks, depth: r.depth + 1, bare: r.bare}
}

// typeArgs steps over <...>.
func (r *reader) typeArgs() bool {
	start, depth := r.pos, 0
	for steps := 0; steps < 400; steps++ {
		t := r.cur()
		if t.kind == tEOF {
			break
		}
		if t.kind == tPunct {
			switch t.text {
			case "<":
				depth++
			case ">", ">>", ">>>":
				depth -= len(t.text)
			case "(", "[", "{":
				r.skipBalanced()
				continue
			case ")", "]", "}", ";", "&&", "||":
				r.pos = start
				return false
			}
		}
		r.pos++
		if depth <= 0 {
			return true
		}
	}
	r.pos = start
	return false
}

// skipType steps over a type annotation. A type that stands alone (an alias)
// may hold `=>` and go over lines.
func (r *reader) skipType(alias bool) {
	want := true // an operand is wanted
	for {
		t := r.cur()
		if t.kind == tEOF {
			return
		}
		if t.kind == tPunct {
			switch t.text {
			case "(", "[":
				if !want && t.nl {
					return
				}
				r.skipBalanced()
				want = false
				continue
			case "{":
				if !want {
					return
				}
				r.skipBalanced()
				want = false
				continue
			case "<":
				if !r.typeArgs() {
					return
				}
				want = false
				continue
			case "|", "&", ".", "?", ":":
				if t.text == "?" && !alias || t.text == ":" && !alias {
					return
				}
				r.pos++
				want = true
				continue
			case "=>":
				if want {
					return
				}
				// A function type: its result follows, unless the arrow belongs
				// to an arrow function whose result type was read.
				if r.pos > 0 && r.at(-1).kind == tPunct && r.at(-1).text == ")" {
					r.pos++
					want = true
					continue
				}
				return
			case "-":
				r.pos++
				continue
			}
			return
		}
		if !want {
			if t.kind == tName && (t.text == "is" || t.text == "extends" || t.text == "in") && !t.nl {
				r.pos++
				want = true
				continue
			}
			return
		}
		switch t.text {
		case "keyof", "typeof", "readonly", "unique", "infer", "asserts", "new", "abstract":
			if t.kind == tName {
				r.pos++
				continue
			}
		}
		r.pos++
		want = false
	}
}

// ---- expressions

type op struct {
	level int
	name  string
	right bool
}

// Binary operators by language. Names are JavaScript's, so that what they
// mean is decided in one place (package value).
var jsBinary = map[string]op{
	"??": {3, "??", false}, "||": {3, "||", false}, "&&": {4, "&&", false}, "|": {5, "|", false}, "^": {6, "^", false}, "&": {7, "&", false},
	"==": {8, "==", false}, "!=": {8, "!=", false}, "===": {8, "===", false}, "!==": {8, "!==", false},
	"<": {9, "<", false}, ">": {9, ">", false}, "<=": {9, "<=", false}, ">=": {9, ">=", false},
	"<<": {10, "<<", false}, ">>": {10, ">>", false}, ">>>": {10, ">>>", false},
	"+": {11, "+", false}, "-": {11, "-", false}, "*": {12, "*", false}, "/": {12, "/", false}, "%": {12, "%", false}, "**": {13, "**", true},
}
var pyBinary = map[string]op{
	"or": {3, "||", false}, "and": {4, "&&", false}, "in": {6, "in", false}, "is": {6, "===", false}, "not": {6, "not in", false},
	"==": {6, "==", false}, "!=": {6, "!=", false}, "<": {6, "<", false}, ">": {6, ">", false}, "<=": {6, "<=", false}, ">=": {6, ">=", false},
	"|": {7, "|", false}, "^": {8, "^", false}, "&": {9, "&", false}, "<<": {10, "<<", false}, ">>": {10, ">>", false},
	"+": {11, "+", false}, "-": {11, "-", false}, "*": {12, "*", false}, "/": {12, "/", false}, "//": {12, "//", false}, "%": {12, "%", false},
	"@": {12, "@", false}, "**": {14, "**", true},
}

var assignOps = map[string]bool{"=": true, "+=": true, "-=": true, "*=": true, "/=": true, "??=": true, "||=": true, "&&=": true,
	"%=": true, "**=": true, "|=": true, "&=": true, "^=": true, "<<=": true, ">>=": true, ">>>=": true, "//=": true, "@=": true, ":=": true}

// sequence reads expressions with commas; the value is the last (JavaScript)
// or a tuple (Python).
func (r *reader) sequence() *Node {
	e := r.expr(1)
	if e == nil || !r.isP(",") {
		return e
	}
	return r.tupled(e)
}

// tupled reads what follows the first expression of a sequence.
func (r *reader) tupled(e *Node) *Node {
	list := &Node{Kind: Array, Off: e.Off, Kids: []*Node{e}}
	if !r.py() {
		list.Name = LastOf
	}
	for r.eatP(",") {
		if r.py() && (r.cur().kind == tNewline || r.isP("=") || r.isP(")") || r.isP(":")) {
			break
		}
		x := r.expr(1)
		if x == nil {
			break
		}
		list.Kids = append(list.Kids, x)
	}
	return r.done(list)
}

func binary(name string, off int32, kids ...*Node) *Node {
	return &Node{Kind: Binary, Name: name, Off: off, Kids: kids}
}

// expr reads an expression whose operators bind at least as tightly as level.
func (r *reader) expr(level int) *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return &Node{Kind: Unknown, Off: r.end(), End: r.end()}
	}
	defer r.leave()
	left := r.unary()
	if left == nil {
		return nil
	}
	for {
		t := r.cur()
		if t.kind == tName && !r.py() {
			switch {
			case (t.text == "as" || t.text == "satisfies") && !t.nl:
				r.pos++
				if !r.eatN("const") {
					r.skipType(false)
				}
				continue
			case t.text == "instanceof" || t.text == "in" && !r.noIn:
				if level > 9 {
					return left
				}
				r.pos++
				left = r.done(binary(t.text, left.Off, left, r.operand(10)))
				continue
			}
			return left
		}
		if t.kind == tName && t.text == "if" && level <= 2 { // Python's conditional
			start := r.pos
			if r.bare[t.off] { // it was read before
				return left
			}
			r.pos++
			test := r.expr(3)
			if !r.eatN("else") {
				r.another(start)
				return left
			}
			left = r.done(&Node{Kind: Cond, Off: left.Off, Kids: []*Node{test, left, r.operand(2)}})
			continue
		}
		if t.kind != tPunct && t.kind != tName {
			return left
		}
		if t.kind == tPunct && assignOps[t.text] {
			if level > 1 || r.py() && t.text != ":=" {
				return left
			}
			r.pos++
			left = r.done(&Node{Kind: Assign, Name: t.text, Off: left.Off, Kids: []*Node{left, r.operand(1)}})
			continue
		}
		if t.kind == tPunct && t.text == "?" && !r.py() {
			if level > 2 {
				return left
			}
			r.pos++
			saved := r.noIn
			r.noIn = false
			yes := r.operand(1)
			r.noIn = saved
			r.eatP(":")
			left = r.done(&Node{Kind: Cond, Off: left.Off, Kids: []*Node{left, yes, r.operand(1)}})
			continue
		}
		table := jsBinary
		if r.py() {
			table = pyBinary
		}
		o, ok := table[t.text]
		if !ok || o.level < level || r.noIn && t.text == "in" {
			return left
		}
		r.pos++
		if r.py() {
			switch {
			case t.text == "not":
				if !r.eatN("in") {
					r.pos--
					return left
				}
			case t.text == "is" && r.eatN("not"):
				o.name = "!=="
			}
		}
		next := o.level + 1
		if o.right {
			next = o.level
		}
		left = r.done(binary(o.name, left.Off, left, r.operand(next)))
	}
}

// operand is expr that gives Unknown instead of nothing.
func (r *reader) operand(level int) *Node {
	if e := r.expr(level); e != nil {
		return e
	}
	return &Node{Kind: Unknown, Off: r.end(), End: r.end()}
}

func (r *reader) unary() *Node {
	t := r.cur()
	one := func(name string, level int) *Node {
		r.pos++
		n := &Node{Kind: Unary, Name: name, Off: t.off}
		n.Kids = []*Node{r.operand(level)}
		return r.done(n)
	}
	if t.kind == tPunct {
		switch t.text {
		case "!", "-", "+", "~":
			return one(t.text, 13)
		case "++", "--":
			return one(t.text, 14)
		case "*", "**":
			if r.py() {
				r.pos++
				return r.done(&Node{Kind: Spread, Name: t.text, Off: t.off, Kids: []*Node{r.operand(5)}})
			}
		case "...":
			if !r.py() {
				r.pos++
				return r.done(&Node{Kind: Spread, Off: t.off, Kids: []*Node{r.operand(1)}})
			}
		case "<":
			if r.lang == TypeScript && r.arrowAhead() {
				r.typeArgs()
				break
			}
			if r.lang == TypeScript && r.typeArgs() { // an old cast
				return r.unary()
			}
		}
	}
	if t.kind == tName {
		switch t.text {
		case "typeof", "void", "delete":
			if !r.py() {
				return one(t.text, 13)
			}
		case "await":
			if n := r.at(1); n.kind != tPunct || strings.Contains("([{`", n.text) {
				r.pos++
				return r.done(&Node{Kind: Await, Off: t.off, Kids: []*Node{r.operand(14)}})
			}
		case "yield":
			r.pos++
			r.eatP("*")
			r.eatN("from")
			if r.cur().nl || r.cur().kind == tNewline || r.isP(")") || r.isP(";") || r.isP("}") {
				return &Node{Kind: Unknown, Name: Yield, Off: t.off, End: t.end}
			}
			given := r.operand(1)
			if r.py() && r.isP(",") { // yield gives a tuple, as return does
				given = r.tupled(given)
			}
			return r.done(&Node{Kind: Await, Name: Yield, Off: t.off, Kids: []*Node{given}})
		case "not":
			if r.py() {
				return one("!", 5)
			}
		}
	}
	return r.postfix(r.primary())
}

// arrowAhead tells whether the bracket at the cursor opens the parameters of
// an arrow function.
func (r *reader) arrowAhead() bool {
	saved := r.pos
	defer func() { r.pos = saved }()
	if r.isP("<") && !r.typeArgs() {
		return false
	}
	if !r.isP("(") {
		return false
	}
	r.skipBalanced()
	if r.isP("=>") {
		return true
	}
	if r.lang != JavaScript && r.eatP(":") {
		r.skipType(false)
		return r.isP("=>")
	}
	return false
}

func (r *reader) arrowBody(n *Node) *Node {
	r.eatP("=>")
	if r.isP("{") {
		saved := r.noIn
		r.noIn = false
		n.Kids = append(n.Kids, r.block())
		r.noIn = saved
	} else {
		n.Flag |= Arrow
		n.Kids = append(n.Kids, r.operand(1))
	}
	return r.done(n)
}

func (r *reader) primary() *Node {
	t := r.cur()
	n := &Node{Off: t.off, End: t.end}
	switch t.kind {
	case tNumber:
		r.pos++
		n.Kind, n.Name = Number, t.text
		return n
	case tString:
		r.pos++
		n.Kind, n.Name = String, t.text
		for r.py() && (r.cur().kind == tString || r.cur().kind == tTemplate) { // "a" "b"
			next := r.primary()
			n = &Node{Kind: Template, Off: n.Off, End: next.End, Kids: []*Node{n, next}}
			if next.Kind == Template {
				n.Kids = append(n.Kids[:1], next.Kids...)
			}
		}
		return n
	case tTemplate:
		r.pos++
		n.Kind = Template
		n.Kids = r.parts(t)
		for r.py() && (r.cur().kind == tString || r.cur().kind == tTemplate) {
			n.Kids = append(n.Kids, r.primary())
		}
		return n
	case tRegex:
		r.pos++
		n.Name = Pattern + string(r.src[t.off:t.end])
		return n
	case tMarkup:
		r.pos++
		n.Kind = Markup
		n.Kids = r.parts(t)
		return n
	case tName:
		return r.name(t)
	case tPunct:
		switch t.text {
		case "(":
			if !r.py() && r.arrowAhead() {
				f := &Node{Kind: Func, Off: t.off, Kids: []*Node{r.params()}}
				if r.eatP(":") {
					r.skipType(false)
				}
				return r.arrowBody(f)
			}
			r.pos++
			saved := r.noIn
			r.noIn = false
			defer func() { r.noIn = saved }()
			if r.eatP(")") {
				n.Kind = Array
				return r.done(n)
			}
			e := r.sequence()
			if e.Is(Array) && e.Name == LastOf && e.Kids[0].Is(Number) && len(e.Kids) == 2 { // (0, module.call)(…), as compilers write it
				e = e.Kids[1]
			}
			e = r.comprehension(e, ")")
			for !r.isP(")") && r.cur().kind != tEOF && !r.isP("}") && !r.isP("]") && r.cur().kind != tDedent {
				r.skipBalanced()
			}
			r.eatP(")")
			return e
		case "[":
			r.pos++
			n.Kind = Array
			saved := r.noIn
			r.noIn = false
			r.list(n, "]")
			r.noIn = saved
			return r.done(n)
		case "{":
			return r.object()
		case "@":
			r.decorators()
			return r.primary()
		case "...":
			if r.py() {
				r.pos++
				return n
			}
		}
	}
	return nil
}

func (r *reader) name(t *tok) *Node {
	n := &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}
	if r.py() {
		switch t.text {
		case "True":
			n.Kind = True
		case "False":
			n.Kind = False
		case "None":
			n.Kind = Null
		case "lambda":
			r.pos++
			f := &Node{Kind: Func, Off: t.off, Flag: Arrow}
			ps := &Node{Kind: Params, Off: r.cur().off}
			for !r.isP(":") && r.cur().kind != tEOF && r.cur().kind != tNewline {
				start := r.pos
				p := &Node{Kind: Param, Off: r.cur().off, Kids: []*Node{nil, nil}}
				if r.eatP("*") || r.eatP("**") {
					p.Flag |= Rest
				}
				if r.cur().kind == tName {
					p.Name = r.cur().text
					r.pos++
				}
				if r.eatP("=") {
					p.Kids[0] = r.expr(1)
				}
				ps.Kids = append(ps.Kids, r.done(p))
				if !r.eatP(",") && r.pos == start {
					r.pos++
				}
			}
			r.eatP(":")
			f.Kids = []*Node{r.done(ps), r.operand(1)}
			return r.done(f)
		case "if", "else", "elif", "for", "while", "in", "is", "and", "or", "def", "class", "return", "import", "from", "with", "as", "pass", "try", "except", "finally", "del", "global", "nonlocal", "raise", "assert":
			return nil
		}
		r.pos++
		return n
	}
	switch t.text {
	case "true":
		n.Kind = True
	case "false":
		n.Kind = False
	case "null":
		n.Kind = Null
	case "undefined":
		n.Kind = Undefined
	case "function":
		r.pos++
		return r.function(t.off, 0)
	case "class":
		return r.jsClass()
	case "new":
		r.pos++
		if r.eatP(".") { // new.target
			r.pos++
			n.Kind = Unknown
			return r.done(n)
		}
		n.Kind, n.Name = New, ""
		callee := r.member(r.primary())
		if callee == nil {
			return r.done(n)
		}
		n.Kids = []*Node{callee}
		if r.isP("<") {
			r.typeArgs()
		}
		if r.isP("(") {
			r.arguments(n)
		}
		return r.done(n)
	case "async":
		if next := r.at(1); !next.nl {
			if next.kind == tName && next.text == "function" {
				r.pos += 2
				return r.function(t.off, Async)
			}
			if next.kind == tName && r.at(2).kind == tPunct && r.at(2).text == "=>" {
				r.pos++
				f := r.name(r.cur())
				if f != nil { // nil where it is nested too deeply
					f.Flag |= Async
				}
				return f
			}
			if next.kind == tPunct && next.text == "(" {
				r.pos++
				if r.arrowAhead() {
					f := r.primary()
					if f != nil {
						f.Flag |= Async
						f.Off = t.off
					}
					return f
				}
				r.pos--
			}
		}
	case "return", "else", "case", "of":
		if t.text != "of" {
			return nil
		}
	}
	if next := r.at(1); next.kind == tPunct && next.text == "=>" {
		r.pos++
		p := &Node{Kind: Param, Name: t.text, Off: t.off, End: t.end, Kids: []*Node{nil, nil}}
		f := &Node{Kind: Func, Off: t.off, Kids: []*Node{{Kind: Params, Off: t.off, End: t.end, Kids: []*Node{p}}}}
		return r.arrowBody(f)
	}
	r.pos++
	return n
}

// parts reads the expressions in a template, a format string or markup.
func (r *reader) parts(t *tok) []*Node {
	var list []*Node
	for _, p := range t.parts {
		if p.toks == nil {
			if p.text != "" {
				list = append(list, &Node{Kind: String, Name: p.text, Off: p.off, End: p.end})
			}
			continue
		}
		sub := r.part(p.toks)
		e := sub.sequence()
		if e == nil {
			if t.kind == tMarkup {
				continue
			}
			e = &Node{Kind: Unknown, Off: p.off, End: p.end}
		}
		list = append(list, e)
	}
	return list
}

// tagged gives what a tag of a template is called with: the texts around the values, and
// these (ECMAScript 2025, "Tagged Templates").
func (r *reader) tagged(t *tok) []*Node {
	texts := &Node{Kind: Array, Off: t.off, End: t.end}
	out := []*Node{texts}
	for _, p := range t.parts {
		if p.toks == nil {
			if len(texts.Kids) < len(out) {
				texts.Kids = append(texts.Kids, &Node{Kind: String, Name: p.text, Off: p.off, End: p.end})
			}
			continue
		}
		if len(texts.Kids) < len(out) { // an empty one
			texts.Kids = append(texts.Kids, &Node{Kind: String, Off: p.off, End: p.off})
		}
		sub := r.part(p.toks)
		e := sub.sequence()
		if e == nil {
			e = &Node{Kind: Unknown, Off: p.off, End: p.end}
		}
		out = append(out, e)
	}
	if len(texts.Kids) < len(out) {
		texts.Kids = append(texts.Kids, &Node{Kind: String, Off: t.end, End: t.end})
	}
	return out
}

// list reads elements up to a closing bracket.
func (r *reader) list(n *Node, until string) {
	for !r.isP(until) && r.cur().kind != tEOF {
		start := r.pos
		if r.isP(",") {
			r.pos++
			n.Kids = append(n.Kids, &Node{Kind: Undefined, Off: r.end(), End: r.end()})
			continue
		}
		e := r.expr(1)
		if e != nil {
			e = r.comprehension(e, until)
			if e.Kind == Comp && len(n.Kids) == 0 {
				n.Kind, n.Kids, n.Name = Comp, e.Kids, e.Name
				break
			}
			n.Kids = append(n.Kids, e)
		}
		if !r.eatP(",") && !r.isP(until) && r.pos == start {
			if r.isP(")") || r.isP("}") || r.isP("]") || r.cur().kind == tDedent {
				return
			}
			r.skipBalanced()
		}
	}
	r.eatP(until)
}

// comprehension reads Python's `for x in y if z` after an element.
func (r *reader) comprehension(e *Node, until string) *Node {
	if !r.py() || e == nil || !r.isN("for") && !(r.isN("async") && r.at(1).text == "for") {
		return e
	}
	n := &Node{Kind: Comp, Off: e.Off, Kids: []*Node{e}}
	for r.isN("for") || r.isN("async") || r.isN("if") {
		if r.eatN("if") {
			n.Kids = append(n.Kids, r.operand(3))
			n.Name += "i"
			continue
		}
		r.eatN("async")
		r.pos++
		r.noIn = true
		target := r.sequence()
		r.noIn = false
		r.eatN("in")
		n.Kids = append(n.Kids, target, r.operand(3))
		n.Name += "f"
	}
	return r.done(n)
}

// object reads an object literal, a dict or a set, and patterns alike.
func (r *reader) object() *Node {
	n := &Node{Kind: Object, Off: r.cur().off}
	if !r.eatP("{") {
		return r.done(n)
	}
	saved := r.noIn
	r.noIn = false
	defer func() { r.noIn = saved }()
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		if k := r.pair(); k != nil {
			if c := r.comprehension(k, "}"); c.Kind == Comp {
				n.Kind, n.Kids, n.Name = Comp, c.Kids, c.Name
				break
			}
			n.Kids = append(n.Kids, k)
		}
		if !r.eatP(",") && !r.isP("}") && r.pos == start {
			if r.isP(")") || r.isP("]") || r.cur().kind == tDedent {
				return r.done(n)
			}
			r.skipBalanced()
		}
	}
	r.eatP("}")
	if r.py() && n.Kind == Object && len(n.Kids) > 0 {
		set := true
		for _, k := range n.Kids {
			set = set && k.Kind != Pair && !(k.Kind == Spread && k.Name == "**")
		}
		if set {
			n.Kind = Array
		}
	}
	return r.done(n)
}

func (r *reader) pair() *Node {
	t := r.cur()
	if r.py() {
		e := r.expr(1)
		if e == nil || e.Kind == Spread || !r.eatP(":") {
			return e
		}
		p := &Node{Kind: Pair, Off: e.Off, Kids: []*Node{r.operand(1)}}
		if e.Kind == String {
			p.Name = e.Name
		} else {
			p.Kids = append(p.Kids, e)
		}
		return r.done(p)
	}
	if t.kind == tPunct && t.text == "..." {
		return r.unary()
	}
	var flag uint16 = Method
	setter := false
	for r.cur().kind == tName && (r.cur().text == "async" || r.cur().text == "get" || r.cur().text == "set") {
		if n := r.at(1); n.kind == tPunct && strings.Contains("(:,}=<", n.text) {
			break
		}
		if r.cur().text == "get" {
			flag |= Getter
		}
		setter = r.cur().text == "set"
		r.pos++
	}
	r.eatP("*")
	t = r.cur()
	p := &Node{Kind: Pair, Off: t.off}
	var computed *Node
	switch {
	case t.kind == tName || t.kind == tString || t.kind == tNumber:
		p.Name = t.text
		r.pos++
	case r.isP("["):
		r.pos++
		computed = r.expr(1)
		r.eatP("]")
		if computed.Is(String) {
			p.Name = computed.Name
			computed = nil
		}
	default:
		return nil
	}
	if r.isP("<") {
		r.typeArgs()
	}
	switch {
	case r.isP("("):
		f := r.function(t.off, flag)
		if f == nil {
			return nil
		}
		if setter {
			p.Name = Setter + p.Name
		}
		f.Name = p.Name
		p.Kids = []*Node{f}
	case r.eatP(":"):
		p.Kids = []*Node{r.operand(1)}
	default:
		short := &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end}
		switch t.text {
		case "undefined":
			short.Kind = Undefined
		}
		if r.eatP("=") { // a default in a pattern, or an enum's member
			short = &Node{Kind: Assign, Name: "=", Off: t.off, Kids: []*Node{short, r.operand(1)}}
			r.done(short)
		}
		p.Kids = []*Node{short}
	}
	if computed != nil {
		p.Kids = append(p.Kids, computed)
	}
	return r.done(p)
}

// member reads .name and [index] only, for `new a.b()`.
func (r *reader) member(n *Node) *Node {
	for n != nil && r.isP(".") && r.at(1).kind == tName {
		r.pos += 2
		n = &Node{Kind: Member, Name: r.at(-1).text, Off: n.Off, End: r.end(), Kids: []*Node{n}}
	}
	return n
}

func (r *reader) arguments(call *Node) {
	r.eatP("(")
	saved := r.noIn
	r.noIn = false
	defer func() { r.noIn = saved }()
	for !r.isP(")") && r.cur().kind != tEOF {
		start := r.pos
		if t := r.cur(); r.py() && t.kind == tName && r.at(1).kind == tPunct && r.at(1).text == "=" {
			r.pos += 2
			k := &Node{Kind: Keyword, Name: t.text, Off: t.off, Kids: []*Node{r.operand(1)}}
			call.Kids = append(call.Kids, r.done(k))
		} else if e := r.expr(1); e != nil {
			call.Kids = append(call.Kids, r.comprehension(e, ")"))
		}
		if !r.eatP(",") && !r.isP(")") && r.pos == start {
			if r.isP("}") || r.isP("]") || r.cur().kind == tDedent {
				return
			}
			r.skipBalanced()
		}
	}
	r.eatP(")")
}

func (r *reader) postfix(n *Node) *Node {
	var guard uint16 // ?. before a call or an index
	for n != nil {
		t := r.cur()
		if t.kind == tTemplate && !r.py() { // a tagged template
			r.pos++
			n = &Node{Kind: Call, Off: n.Off, End: r.end(), Kids: append([]*Node{n}, r.tagged(t)...)}
			continue
		}
		if t.kind != tPunct {
			return n
		}
		switch t.text {
		case ".", "?.":
			next := r.at(1)
			if t.text == "?." && next.kind == tPunct && (next.text == "(" || next.text == "[") {
				r.pos++
				guard = OptionalOp
				continue
			}
			if next.kind != tName {
				r.pos++
				return n
			}
			r.pos += 2
			n = &Node{Kind: Member, Name: next.text, Off: n.Off, End: r.end(), Kids: []*Node{n}}
			if t.text == "?." {
				n.Flag |= OptionalOp
			}
		case "(":
			c := &Node{Kind: Call, Flag: guard, Off: n.Off, Kids: []*Node{n}}
			guard = 0
			r.arguments(c)
			n = r.done(c)
		case "[":
			r.pos++
			c := &Node{Kind: Index, Flag: guard, Off: n.Off, Kids: []*Node{n}}
			guard = 0
			if r.py() && r.cur().kind == tNumber && r.at(1).kind == tPunct && r.at(1).text == ":" && r.at(2).kind == tPunct && r.at(2).text == "]" { // x[1:]
				first := &Node{Kind: Number, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}
				r.pos += 3
				c.Kids = append(c.Kids, &Node{Kind: Unknown, Name: Rest1, Off: first.Off, End: r.end(), Kids: []*Node{first}})
				n = r.done(c)
				continue
			}
			e := r.sequence()
			switch {
			case r.isP(":") && r.py():
				part := &Node{Kind: Unknown, Name: Slice, Off: r.end()}
				for {
					if e == nil {
						e = &Node{Kind: Undefined, Off: r.end(), End: r.end()}
					}
					if part.Kids = append(part.Kids, e); !r.eatP(":") {
						break
					}
					e = r.expr(1)
				}
				c.Kids = append(c.Kids, r.done(part))
			case e != nil && !r.isP(":"):
				c.Kids = append(c.Kids, e)
			default:
				c.Kids = append(c.Kids, &Node{Kind: Unknown, Off: r.end(), End: r.end()})
			}
			for !r.isP("]") && r.cur().kind != tEOF && !r.isP(")") && !r.isP("}") && r.cur().kind != tDedent {
				r.skipBalanced()
			}
			r.eatP("]")
			n = r.done(c)
		case "<":
			if r.lang != TypeScript && r.lang != JSX {
				return n
			}
			start := r.pos
			if r.typeArgs() && (r.isP("(") || r.cur().kind == tTemplate) && !r.cur().nl {
				continue
			}
			r.pos = start
			return n
		case "!":
			if !r.py() && !t.nl {
				r.pos++
				continue
			}
			return n
		case "++", "--":
			if t.nl {
				return n
			}
			r.pos++
			n = &Node{Kind: Unary, Name: t.text, Off: n.Off, End: r.end(), Kids: []*Node{n}}
		default:
			return n
		}
	}
	return n
}
