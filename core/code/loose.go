package code

import (
	"slices"
	"strconv"
	"strings"
)

// parseMore reads the tokens of the languages that lexMore lexes. It is looser
// than the grammars: types and modifiers are stepped over, and what is kept is
// what every language has: imports, bindings, functions, classes, calls.
func parseMore(lang Language, src []byte, toks []tok) *Node {
	r := &loose{reader: reader{lang: lang, src: src, toks: toks}}
	body := &Node{Kind: Block, End: int32(len(src))}
	for r.cur().kind != tEOF {
		start := r.pos
		r.into(body, r.stmt())
		if r.pos == start {
			r.pos++
		}
	}
	return body
}

type loose struct {
	reader
	params1 *Node   // the parameters of the block that was read last
	shared  int     // how many values were given to several targets
	label   bool    // in what a case is named by
	jumps   []*jump // those of PHP that leave several loops, while their loops are read
}

// jump leaves so many loops and choices.
type jump struct {
	n    *Node
	left int
}

// leveled gives the jumps of PHP, read since from, that leave several loops the one that they leave,
// as a label (PHP manual, "break", "continue").
func (r *loose) leveled(from int, n *Node) *Node {
	if n == nil || len(r.jumps) <= from {
		return n
	}
	label := "\x00" + strconv.Itoa(int(n.Off))
	found := false
	kept := r.jumps[:from]
	for _, j := range r.jumps[from:] {
		if j.left--; j.left > 0 {
			kept = append(kept, j)
			continue
		}
		found = true
		if j.n.Kids, j.n.Alias = nil, label; !n.Is(Loop) {
			j.n.Name = "break"
		}
	}
	if r.jumps = kept; !found {
		return n
	}
	return r.done(&Node{Kind: Block, Alias: label, Off: n.Off, Kids: []*Node{n}})
}

func (r *loose) into(body, s *Node) {
	if s != nil {
		body.Kids = append(body.Kids, s)
	}
}

// words tells languages whose blocks end with the word end.
func (r *loose) words() bool { return r.lang == Ruby || r.lang == Elixir }

// lines tells languages in which a line end ends a statement.
func (r *loose) lines() bool { return r.words() || r.lang == Kotlin || r.lang == Groovy }

// glued reports whether no space stands before the current token.
func (r *loose) glued() bool { return r.cur().off == r.end() }

var modifiers = map[string]bool{
	"public": true, "private": true, "protected": true, "internal": true, "static": true, "final": true, "abstract": true, "sealed": true, "override": true, "virtual": true, "async": true, "open": true, "data": true,
	"inline": true, "suspend": true, "lateinit": true, "partial": true, "readonly": true, "extern": true, "unsafe": true, "default": true, "synchronized": true, "transient": true, "volatile": true, "native": true, "strictfp": true,
	"pub": true, "companion": true, "tailrec": true, "operator": true, "infix": true, "external": true, "expect": true, "actual": true, "required": true, "crate": true, "move": true, "non-sealed": true, "inner": true, "annotation": true,
}

var classWords = map[string]bool{"class": true, "interface": true, "enum": true, "record": true, "struct": true, "trait": true, "object": true, "impl": true, "module": true, "defmodule": true, "namespace": true, "mod": true, "union": true, "defprotocol": true, "defimpl": true}

// stmt reads one statement; nil where there is nothing to keep.
func (r *loose) stmt() *Node {
	if !r.enter() {
		r.leave()
		r.skipBalanced()
		return nil
	}
	defer r.leave()
	t := r.cur()
	if t.kind == tPunct {
		switch t.text {
		case ";", ",", ")", "]":
			r.pos++
			return nil
		case "{":
			if r.lang != Ruby && r.lang != Elixir {
				return r.braces()
			}
		case "@", "#", "[":
			if t.text == "@" && r.lang == PHP { // errors are kept quiet
				return r.simple()
			}
			if d := r.marks(); d != nil {
				if r.lang == Elixir { // a module's constant
					return d[0]
				}
				s := r.stmt()
				if r.lang == Rust && testsOnly(d) {
					return nil
				}
				if s.Is(Class) || s.Is(Func) || s.Is(Bind) {
					s.Kids = append(s.Kids, d...)
					return s
				}
				if s == nil {
					return &Node{Kind: Block, Off: t.off, End: r.end(), Kids: d}
				}
				return s
			}
		case "<":
			if r.lang == Java { // <T> T name(…)
				if s := r.typed(); s != nil {
					return s
				}
			}
		}
		return r.simple()
	}
	if t.kind != tName {
		return r.simple()
	}
	static := false
	for modifiers[r.cur().text] && r.cur().kind == tName && !(r.lang == Rust && r.isN("static")) {
		if n := r.at(1); r.words() && !(n.kind == tName && strings.HasPrefix(n.text, "def")) { // a method of that name
			break
		}
		if n := r.at(1); n.kind == tPunct && n.text != "@" && n.text != "(" && n.text != "[" && !(n.text == "<" && r.lang == Java) {
			break
		} else if n.kind == tPunct && n.text == "(" {
			if r.cur().text != "pub" {
				break
			}
			r.pos++
			r.skipBalanced()
			continue
		}
		static = static || r.isN("static")
		r.pos++
	}
	if static && (r.lang == Java || r.lang == PHP) {
		s := r.plain()
		if s.Is(Func) || s.Is(Bind) {
			s.Flag |= Static
		}
		for _, k := range s.kids() {
			if s.Is(Block) && s.Name == "," && k.Is(Bind) { // int a, b
				k.Flag |= Static
			}
		}
		return s
	}
	return r.plain()
}

// plain reads a statement after its modifiers.
func (r *loose) plain() *Node {
	t, next := r.cur(), r.at(1)
	if next.kind == tPunct && (next.text == "=" || next.text == ".") {
		if r.lang == Java && next.text == "." { // Map.Entry e = …
			if s := r.typed(); s != nil {
				return s
			}
		}
		return r.simple()
	}
	if r.lang == Java && next.kind == tPunct && next.text == ":" {
		if w := r.at(2); w.kind == tName && (w.text == "for" || w.text == "while" || w.text == "do") {
			r.pos += 2
			b := &Node{Kind: Block, Alias: t.text, Off: t.off}
			r.into(b, r.stmt())
			return r.done(b)
		}
	}
	switch t.text {
	case "import", "using", "use", "package", "alias", "require":
		if s, ok := r.imports(); ok {
			return s
		}
	case "def", "defp", "defmacro", "fun", "fn", "function", "func":
		if next.kind == tName || next.kind == tPunct && (next.text == "<" || next.text == "&" || r.lang == Ruby && t.text == "def" && operators[next.text]) {
			if t.text == "fn" && r.lang == Elixir || t.text == "def" && r.lang == Groovy {
				break
			}
			return r.function(t.off)
		}
	case "val", "var", "let", "const", "static":
		if next.kind == tName || next.kind == tPunct && next.text == "(" {
			return r.variable()
		}
	case "if", "unless":
		return r.ifStmt()
	case "for", "foreach", "while", "until", "loop":
		if !(r.lang == Ruby && t.text == "loop") {
			return r.leveled(len(r.jumps), r.loop())
		}
	case "do":
		r.pos++
		if r.isP("{") {
			from := len(r.jumps)
			b := r.braces()
			if (r.lang == Java || r.lang == PHP) && r.isN("while") {
				r.pos++
				n := &Node{Kind: Loop, Name: "do", Off: t.off, Kids: []*Node{r.head(), b}}
				r.eatP(";")
				return r.leveled(from, r.done(n))
			}
			return b
		}
		return nil
	case "try", "begin", "ensure", "finally", "rescue", "catch":
		if !(r.lang == Ruby && (t.text == "catch" || t.text == "try")) {
			s := r.try()
			if s != nil && r.lang == Ruby { // begin … end while
				return r.tail(s)
			}
			return s
		}
	case "switch", "when", "match", "case", "cond", "receive":
		if !(next.kind == tPunct && (next.text == "," || next.text == "=>" || next.text == "->")) {
			return r.leveled(len(r.jumps), r.choice())
		}
	case "goto":
		if r.lang == PHP && next.kind == tName { // where it goes on is not followed
			n := &Node{Kind: Unknown, Off: t.off}
			r.pos += 2
			r.eatP(";")
			return r.done(&Node{Kind: ExprStmt, Off: t.off, Kids: []*Node{r.done(n)}})
		}
	case "global":
		if r.lang == PHP && next.kind == tName { // the names are those of the file
			n := &Node{Kind: Jump, Name: t.text, Off: t.off}
			for r.pos++; r.cur().kind == tName || r.isP(","); r.pos++ {
				if x := r.cur(); x.kind == tName {
					n.Kids = append(n.Kids, &Node{Kind: Name, Name: x.text, Off: x.off, End: x.end})
				}
			}
			r.eatP(";")
			return r.done(n)
		}
	case "return", "throw", "raise", "yield", "break", "continue", "next":
		if !(r.lang == Ruby && (t.text == "yield" || t.text == "throw")) && !(r.lang == Java && t.text == "yield" && next.kind == tPunct && next.text != "(" && next.text != "-" && next.text != "!") {
			return r.leaving()
		}
	case "end", "else", "elsif", "elseif", "then":
		r.pos++
		return nil
	case "init", "static_init":
		if next.kind == tPunct && next.text == "{" && r.lang == Kotlin {
			r.pos++
			return r.braces()
		}
	case "module":
		if r.lang != Ruby {
			return r.simple()
		}
	}
	if classWords[t.text] && (next.kind == tName || t.text == "impl" || t.text == "object" && next.kind == tPunct && (next.text == "{" || next.text == ":") || t.text == "class" && next.kind == tPunct && next.text == "<<") {
		if !(t.text == "record" && r.lang != Java && r.lang != CSharp) && !(t.text == "object" && r.lang != Kotlin) {
			return r.class()
		}
	}
	if r.lang == Java || r.lang == CSharp || r.lang == Groovy {
		if s := r.typed(); s != nil {
			return s
		}
	}
	return r.simple()
}

// testsOnly reports whether attributes of Rust keep what follows to tests:
// #[test], #[cfg(test)].
func testsOnly(marks []*Node) bool {
	for _, m := range marks {
		switch name := m.Kid(0).Dotted(); {
		case name == "test", name == "bench", strings.HasSuffix(name, ".test"):
			return true
		case name == "cfg" && m.Kid(1).Is(Name) && m.Kid(1).Name == "test":
			return true
		}
	}
	return false
}

// marks reads annotations, attributes and decorators.
func (r *loose) marks() []*Node {
	var list []*Node
	for {
		switch {
		case r.isP("@") && r.lang == Elixir:
			// @port 4000 is a module's constant.
			if r.at(1).kind == tName && r.at(1).off == r.cur().end {
				off := r.cur().off
				r.pos++
				name := &Node{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}
				r.pos++
				if !r.cur().nl && r.cur().kind != tEOF {
					b := &Node{Kind: Bind, Name: "const", Off: off, Kids: []*Node{name, r.expr(0)}}
					return append(list, r.done(b))
				}
				return append(list, &Node{Kind: ExprStmt, Off: off, End: r.end(), Kids: []*Node{name}})
			}
			return list
		case r.isP("@") && r.at(1).kind == tName:
			r.pos++
			if r.at(1).kind == tPunct && r.at(1).text == ":" { // @file:Name, @get:Name
				r.pos += 2
			}
			list = append(list, r.mark())
		case r.isP("#") && (r.at(1).kind == tPunct && (r.at(1).text == "[" || r.at(1).text == "!")):
			r.pos++
			r.eatP("!")
			r.eatP("[")
			for !r.isP("]") && r.cur().kind != tEOF {
				start := r.pos
				if r.cur().kind == tName {
					list = append(list, r.mark())
				} else {
					r.pos++
				}
				if r.pos == start {
					r.pos++
				}
			}
			r.eatP("]")
		case r.isP("[") && r.lang == CSharp && r.pos > 0 && r.at(-1).kind == tPunct && strings.Contains("{};]", r.at(-1).text), r.isP("[") && r.lang == CSharp && r.pos == 0:
			r.pos++
			for !r.isP("]") && r.cur().kind != tEOF {
				start := r.pos
				if r.cur().kind == tName {
					list = append(list, r.mark())
				}
				if r.pos == start {
					r.pos++
				}
			}
			r.eatP("]")
		default:
			return list
		}
	}
}

// mark reads the name of an annotation with its arguments: always as a call.
func (r *loose) mark() *Node {
	n := r.dotted()
	c := &Node{Kind: Call, Off: n.Off, End: n.End, Kids: []*Node{n}}
	if r.isP("(") && !r.cur().nl {
		r.arguments(c)
	} else if r.eatP("=") {
		c.Kids = append(c.Kids, r.expr(0))
	}
	return r.done(c)
}

// dotted reads a.b.c, stepping over the arguments of types.
func (r *loose) dotted() *Node {
	n := &Node{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}
	r.pos++
	for r.isP(".") && r.at(1).kind == tName {
		r.pos++
		n = &Node{Kind: Member, Name: r.cur().text, Off: n.Off, End: r.cur().end, Kids: []*Node{n}}
		r.pos++
	}
	if r.isP("<") && r.lang != Ruby && r.lang != Elixir && r.generics() {
		n.End = max(n.End, 0)
	}
	return n
}

// generics steps over <…>; it moves nothing where that is none.
func (r *loose) generics() bool {
	depth := 0
	for i := 0; i < 60; i++ {
		t := r.at(i)
		if t.kind == tEOF || t.kind == tString {
			return false
		}
		if t.kind != tPunct {
			continue
		}
		switch t.text {
		case "<":
			depth++
		case ">":
			depth--
		case ">>":
			depth -= 2
		case ">>>":
			depth -= 3
		case ";", "{", "}", "&&", "||", "==", "=", "+", "(", ")":
			if !(r.lang == Rust && (t.text == "(" || t.text == ")" || t.text == "=")) {
				return false
			}
		}
		if depth <= 0 {
			r.pos += i + 1
			return true
		}
	}
	return false
}

func (r *loose) braces() *Node {
	n := &Node{Kind: Block, Off: r.cur().off}
	r.eatP("{")
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

// until reads the statements of a block that one of some words ends; the word
// is left to be read.
func (r *loose) until(words ...string) *Node {
	do := r.noDo
	r.noDo = false
	defer func() { r.noDo = do }()
	n := &Node{Kind: Block, Off: r.cur().off}
	for r.cur().kind != tEOF {
		if r.cur().kind == tName && !(r.at(1).kind == tPunct && r.at(1).text == ":" && r.at(1).off == r.cur().end) {
			for _, w := range words {
				if r.cur().text == w && !(r.lang == Ruby && (w == "catch" || w == "after")) { // these are methods of Ruby
					return r.done(n)
				}
			}
		}
		if r.isP("}") && r.lang != Elixir {
			return r.done(n)
		}
		start := r.pos
		r.into(n, r.stmt())
		if r.pos == start {
			r.pos++
		}
	}
	return r.done(n)
}

// body reads the body of something: a block in braces, after do, after an
// arrow or an equals sign, or one statement.
func (r *loose) body() *Node {
	switch {
	case r.isP("{"):
		return r.braces()
	case r.words():
		r.eatN("then")
		if r.eatN("do") {
			b := r.until("end", "else", "rescue", "catch", "after")
			return b
		}
		return r.until("end", "else", "elsif", "when", "in", "rescue", "ensure")
	}
	off := r.cur().off
	if r.eatP(":") { // PHP: if (…): … endif;
		n := &Node{Kind: Block, Off: off}
		for r.cur().kind != tEOF && !strings.HasPrefix(r.cur().text, "end") && !r.isN("else") && !r.isN("elseif") && !r.isP("}") {
			start := r.pos
			r.into(n, r.stmt())
			if r.pos == start {
				r.pos++
			}
		}
		return r.done(n)
	}
	n := &Node{Kind: Block, Off: off}
	r.into(n, r.stmt())
	return r.done(n)
}

// imports reads what makes names of other files known.
func (r *loose) imports() (*Node, bool) {
	t := r.cur()
	switch r.lang {
	case Ruby:
		return nil, false // require is a call
	case Elixir:
		if t.text == "package" || t.text == "using" || r.at(1).kind != tName {
			return nil, false
		}
		r.pos++
		name := r.dotted()
		n := &Node{Kind: Import, Name: name.Dotted(), Off: name.Off, End: name.End}
		r.restOfLine()
		return n, true
	case PHP:
		if t.text != "use" {
			return nil, false
		}
		r.pos++
		for r.isN("function") || r.isN("const") {
			r.pos++
		}
		if r.cur().kind != tName {
			return nil, false
		}
		n := &Node{Kind: Import, Name: strings.TrimPrefix(r.cur().text, `\`), Off: r.cur().off, End: r.cur().end}
		r.pos++
		if open := r.at(1); r.cur().kind == tPunct && r.cur().text == `\` && open.kind == tPunct && open.text == "{" || r.isP("{") { // use A\{B, C}
			r.eatP(`\`)
			r.eatP("{")
			group := &Node{Kind: Block, Name: ",", Off: n.Off}
			for !r.isP("}") && r.cur().kind != tEOF {
				if t := r.cur(); t.kind == tName {
					k := &Node{Kind: Import, Name: strings.TrimSuffix(n.Name, `\`) + `\` + t.text, Off: t.off, End: t.end}
					if r.at(1).kind == tName && r.at(1).text == "as" && r.at(2).kind == tName {
						k.Alias = r.at(2).text
						r.pos += 2
					}
					group.Kids = append(group.Kids, k)
				}
				r.pos++
			}
			r.toSemicolon()
			return r.done(group), true
		}
		if r.isN("as") && r.at(1).kind == tName {
			n.Alias = r.at(1).text
		}
		r.toSemicolon()
		return n, true
	case Rust:
		if t.text != "use" {
			return nil, false
		}
		r.pos++
		for r.isP(".") {
			r.pos++
		}
		if r.cur().kind != tName {
			return nil, false
		}
		name := r.dotted()
		n := &Node{Kind: Import, Name: strings.ReplaceAll(name.Dotted(), ".", "::"), Off: name.Off, End: name.End}
		r.toSemicolon()
		return n, true
	case CSharp:
		if t.text != "using" || r.at(1).kind != tName || r.at(1).text == "var" {
			return nil, false
		}
		r.pos++
		r.eatN("static")
		if r.at(1).kind == tPunct && r.at(1).text == "=" { // an alias
			r.pos += 2
		}
		name := r.dotted()
		if !r.isP(";") { // using Type x = …: a resource
			return nil, false
		}
		r.pos++
		return &Node{Kind: Import, Name: name.Dotted(), Off: name.Off, End: name.End}, true
	}
	if t.text == "using" || t.text == "use" || t.text == "alias" || t.text == "require" {
		return nil, false
	}
	if r.at(1).kind != tName {
		return nil, false
	}
	r.pos++
	r.eatN("static")
	name := r.dotted()
	n := &Node{Kind: Import, Name: name.Dotted(), Off: name.Off, End: name.End}
	if r.isP(".") { // a.b.*
		r.pos++
		r.eatP("*")
		n.Name += ".*"
	}
	if r.isN("as") {
		r.pos += 2
	}
	r.eatP(";")
	if t.text == "package" {
		n.Kind, n.Kids = Name, nil
		return &Node{Kind: ExprStmt, Off: n.Off, End: n.End, Kids: []*Node{{Kind: Call, Off: n.Off, End: n.End, Kids: []*Node{{Kind: Name, Name: "package"}, {Kind: String, Name: n.Name, Off: n.Off, End: n.End}}}}}, true
	}
	return n, true
}

func (r *loose) toSemicolon() {
	for r.cur().kind != tEOF && !r.isP(";") {
		if r.isP("{") || r.isP("(") || r.isP("[") {
			r.skipBalanced()
			continue
		}
		r.pos++
	}
	r.eatP(";")
}

func (r *loose) restOfLine() {
	for r.cur().kind != tEOF && !r.cur().nl {
		if r.isP("{") || r.isP("(") || r.isP("[") {
			r.skipBalanced()
			continue
		}
		r.pos++
	}
}

// phpModifiers before a parameter of a constructor make it a property (PHP
// manual, "Constructor Promotion").
var phpModifiers = map[string]bool{"public": true, "private": true, "protected": true, "readonly": true}

// params reads parameters, keeping their names and defaults.
func (r *loose) params() *Node {
	n := &Node{Kind: Params, Off: r.cur().off}
	if !r.eatP("(") {
		return n
	}
	p := &Node{Kind: Param, Off: r.cur().off, Kids: []*Node{nil, nil}}
	flush := func() {
		if p.Name != "" {
			n.Kids = append(n.Kids, r.done(p))
		}
		p = &Node{Kind: Param, Off: r.cur().off, Kids: []*Node{nil, nil}}
	}
	typed := false
	for !r.isP(")") && r.cur().kind != tEOF {
		t := r.cur()
		switch {
		case t.kind == tPunct && t.text == ",":
			r.pos++
			flush()
			typed = false
			continue
		case t.kind == tPunct && (t.text == "=" || t.text == `\\`):
			r.pos++
			p.Kids[0] = r.expr(0)
			continue
		case t.kind == tPunct && t.text == ":" && r.lang == Ruby && !(r.at(1).kind == tPunct && (r.at(1).text == "," || r.at(1).text == ")")):
			r.pos++ // name: default
			p.Kids[0], p.Alias = r.expr(0), ":"
			continue
		case t.kind == tPunct && (r.lang == Ruby && (t.text == "*" || t.text == "**") || t.text == "..."):
			p.Flag |= Rest
			if t.text == "**" {
				p.Alias = "**"
			}
		case t.kind == tPunct && r.lang == Ruby && t.text == ":": // a name that has to be given
			p.Alias = ":"
		case t.kind == tPunct && t.text == "&" && (r.lang == Ruby || r.lang == PHP):
			p.Alias = "&"
		case t.kind == tName && t.text == "vararg" && r.lang == Kotlin:
			p.Flag |= Rest
		case t.kind == tPunct && (t.text == ":" || t.text == "->"):
			typed = r.lang == Kotlin || r.lang == Rust
		case t.kind == tPunct && t.text == "<" && !r.words() && r.generics():
			continue
		case t.kind == tPunct && (t.text == "(" || t.text == "[" || t.text == "{"):
			if t.text == "[" && r.lang == Java && p.Alias != "" {
				p.Alias += "[]"
			}
			r.skipBalanced()
			continue
		case t.kind == tPunct && t.text == "@" || t.kind == tPunct && t.text == "#":
			if len(r.marks()) > 0 {
				continue
			}
		case t.kind == tName && r.lang == PHP && phpModifiers[t.text]:
			p.Flag |= Exported // a promoted property of a constructor
		case t.kind == tName && !typed:
			if r.lang == Java && p.Alias == "" && t.text != "final" {
				p.Alias = t.text // its type
			}
			p.Name = t.text
		}
		r.pos++
	}
	flush()
	r.eatP(")")
	return r.done(n)
}

// function reads a named function after its keyword.
func (r *loose) function(off int32) *Node {
	word := r.cur().text
	r.pos++
	n := &Node{Kind: Func, Off: off}
	r.eatP("&")
	if r.isP("<") {
		r.generics()
	}
	if r.cur().kind == tName {
		n.Name = r.cur().text
		r.pos++
	}
	for r.isP(".") && r.at(1).kind == tName { // def self.name, fun Type.name
		if r.lang == Ruby && n.Name != "self" {
			n.Alias = n.Name // of one object
		}
		r.pos++
		n.Name = r.cur().text
		n.Flag |= Static
		r.pos++
	}
	if r.isP("<") && !r.words() {
		r.generics()
	}
	if r.lang == Ruby {
		r.operatorName(n)
	}
	if r.isP("(") {
		n.Kids = []*Node{r.params(), nil}
	} else {
		ps := &Node{Kind: Params, Off: r.cur().off, End: r.cur().off}
		if r.lang == Ruby { // def name a, b
			for !r.cur().nl && r.cur().kind == tName {
				ps.Kids = append(ps.Kids, &Node{Kind: Param, Name: r.cur().text, Off: r.cur().off, End: r.cur().end, Kids: []*Node{nil, nil}})
				r.pos++
				r.eatP(",")
			}
		}
		n.Kids = []*Node{ps, nil}
	}
	switch {
	case r.lang == Elixir:
		if r.isN("when") {
			for r.cur().kind != tEOF && !r.isN("do") && !r.isP(",") {
				r.pos++
			}
		}
		if r.eatP(",") && r.isN("do") { // def name(x), do: value
			r.pos += 2
			n.Kids[1] = r.one(r.expr(0))
			break
		}
		if !r.eatN("do") {
			n.Kids[1] = &Node{Kind: Block, Off: r.end(), End: r.end()}
			break
		}
		n.Kids[1] = r.blockToEnd()
	case r.lang == Ruby:
		if r.isP("=") { // def name = value
			r.pos++
			n.Kids[1] = r.one(r.rescued(r.assigned(r.expr(0))))
			break
		}
		n.Kids[1] = r.blockToEnd()
	default:
		// The type of what is returned, and conditions on types.
		for r.cur().kind != tEOF && !r.isP("{") && !r.isP(";") && !r.isP("=") && !(r.isP("=>") && r.lang == PHP) && !(r.lang == Kotlin && r.cur().nl && word == "fun" && !r.isP(":")) {
			if r.isP("(") || r.isP("[") {
				r.skipBalanced()
				continue
			}
			r.pos++
		}
		switch {
		case r.isP("{"):
			n.Kids[1] = r.braces()
		case r.isP("=") || r.isP("=>"):
			r.pos++
			n.Kids[1] = r.one(r.expr(0))
			n.Flag |= Arrow
			n.Kids[1] = &Node{Kind: Block, Off: n.Kids[1].Off, End: n.Kids[1].End, Kids: []*Node{{Kind: Return, Off: n.Kids[1].Off, End: n.Kids[1].End, Kids: n.Kids[1].Kids[0].Kids}}}
			n.Flag &^= Arrow
		default:
			n.Kids[1] = &Node{Kind: Block, Off: r.end(), End: r.end()}
			r.eatP(";")
		}
	}
	return r.done(n)
}

// operators are the signs that a method of Ruby may be named by.
var operators = map[string]bool{"[": true, "==": true, "<=>": true, "+": true, "-": true, "*": true, "/": true, "%": true, "<<": true, ">>": true, "!": true, "===": true, "=~": true, "<": true, ">": true, "<=": true, ">=": true, "!=": true, "&": true, "|": true, "^": true, "~": true, "**": true}

// operatorName goes on with the name of a method of Ruby: [], []=, ==, self.[],
// and name= of what sets something.
func (r *loose) operatorName(n *Node) {
	if r.isP(".") && n.Name != "" && r.at(1).kind == tPunct && operators[r.at(1).text] { // self.[]
		r.pos++
		n.Name, n.Flag = "", n.Flag|Static
	}
	if t := r.cur(); n.Name == "" && t.kind == tPunct && operators[t.text] {
		n.Name = t.text
		r.pos++
		if t.text == "[" && r.eatP("]") {
			n.Name = "[]"
			if r.isP("=") && r.glued() {
				r.pos++
				n.Name = "[]="
			}
		}
		return
	}
	if next := r.at(1); r.isP("=") && r.glued() && n.Name != "" && next.off == r.cur().end && (next.kind == tPunct && next.text == "(" || next.kind == tName) {
		r.pos++
		n.Name += "="
	}
}

// one makes a block of an expression.
func (r *loose) one(e *Node) *Node {
	if e == nil {
		e = &Node{Kind: Unknown, Off: r.end(), End: r.end()}
	}
	return &Node{Kind: Block, Off: e.Off, End: e.End, Kids: []*Node{{Kind: ExprStmt, Off: e.Off, End: e.End, Kids: []*Node{e}}}}
}

// blockToEnd reads a body with its rescue and else parts up to end.
func (r *loose) blockToEnd() *Node {
	if r.lang != Ruby {
		b := r.until("end")
		r.eatN("end")
		return b
	}
	b := r.until("end", "rescue", "ensure", "else")
	if r.isN("end") || r.cur().kind == tEOF || r.isP("}") {
		r.eatN("end")
		return b
	}
	n := &Node{Kind: Try, Off: b.Off, Kids: []*Node{named("try", b)}}
	r.handlers(n)
	r.eatN("end")
	return &Node{Kind: Block, Off: n.Off, End: r.done(n).End, Kids: []*Node{n}}
}

// handlers reads what stands behind a block of Ruby and Elixir for its errors
// and its end.
func (r *loose) handlers(n *Node) {
	for r.isN("rescue") || r.isN("catch") && r.lang != Ruby || r.isN("ensure") || r.isN("else") || r.isN("after") && r.lang != Ruby {
		name := map[string]string{"rescue": "catch", "catch": "catch", "ensure": "finally", "after": "finally", "else": "else"}[r.cur().text]
		r.pos++
		takes := ""
		for name == "catch" && r.lang == Ruby && r.cur().kind != tEOF && !r.cur().nl && !r.isN("then") && !r.isP(";") { // its classes
			switch t := r.cur(); {
			case t.kind == tPunct && t.text == "=>":
				takes += ":"
			case t.kind == tName || t.kind == tPunct && (t.text == "," || t.text == "."):
				takes += t.text
			}
			r.pos++
		}
		r.eatN("then")
		k := r.until("end", "rescue", "catch", "ensure", "else", "after")
		k.Name, k.Alias = name, takes
		n.Kids = append(n.Kids, k)
	}
}

// variable reads val, var, let and const.
func (r *loose) variable() *Node {
	t := r.cur()
	n := &Node{Kind: Bind, Name: t.text, Off: t.off}
	opens := false
	r.pos++
	for r.isN("mut") || r.isN("ref") || r.isN("const") {
		r.pos++
	}
	if r.isP("(") { // a pattern
		start := r.pos
		r.skipBalanced()
		n.Kids = []*Node{{Kind: Array, Off: r.toks[start].off, End: r.end()}, nil}
	} else {
		if r.lang == PHP || r.lang == CSharp { // const TYPE NAME =
			for r.at(1).kind == tName && !r.at(1).nl {
				r.pos++
			}
		}
		n.Kids = []*Node{{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}, nil}
		r.pos++
		if next, end := r.cur(), r.at(2); r.lang == Rust && r.isP("(") && r.at(1).kind == tName && end.kind == tPunct && end.text == ")" && next.off == r.end() {
			// let Some(x) = … else { … }: x is what is in it
			opens = true
			n.Kids[0] = &Node{Kind: Name, Name: r.at(1).text, Off: r.at(1).off, End: r.at(1).end}
			r.pos += 3
		}
	}
	typed := ""
	if r.isP(":") {
		if t := r.at(1); t.kind == tName && r.lang == Rust {
			typed = t.text
		}
		for r.cur().kind != tEOF && !r.isP("=") && !r.isP(";") && !r.isP("{") && !r.isP("}") && !r.isN("by") && !(r.cur().nl && r.lang == Kotlin) {
			if r.isP("<") && r.generics() {
				continue
			}
			if r.isP("(") || r.isP("[") {
				r.skipBalanced()
				continue
			}
			r.pos++
		}
	}
	if r.lang == Kotlin && r.isN("get") && r.at(1).kind == tPunct && r.at(1).text == "(" && r.at(2).kind == tPunct && r.at(2).text == ")" {
		n.Kids[1] = r.getter()
		return r.done(n)
	}
	if r.eatP("=") || r.eatN("by") {
		n.Kids[1] = r.expr(0)
		if v := n.Kids[1]; typed != "" && v.Is(Call) {
			v.Alias = typed
		}
		if v := n.Kids[1]; opens && v != nil {
			n.Kids[1] = r.done(&Node{Kind: Call, Off: v.Off, Kids: []*Node{r.done(&Node{Kind: Member, Name: "unwrap", Off: v.Off, Kids: []*Node{v}})}})
		}
		if r.isN("else") && r.lang == Rust { // let … else { … }
			r.pos++
			r.braces()
		}
	}
	r.eatP(";")
	return r.done(n)
}

// getter reads get() = x and get() { … } of a property of Kotlin, as what it
// gives.
func (r *loose) getter() *Node {
	off := r.cur().off
	r.pos += 3
	for r.isP(":") || r.cur().kind == tName && !r.cur().nl && !r.isP("{") {
		r.pos++
	}
	if r.eatP("=") {
		return r.expr(0)
	}
	if !r.isP("{") {
		return nil
	}
	f := &Node{Kind: Func, Off: off, Kids: []*Node{{Kind: Params, Off: off, End: off}, r.braces()}}
	return r.done(&Node{Kind: Call, Off: off, Kids: []*Node{r.done(f)}})
}

// ifStmt reads if, unless and what belongs to them.
func (r *loose) ifStmt() *Node {
	n := &Node{Kind: If, Off: r.cur().off}
	not := r.isN("unless")
	r.pos++
	var pattern *Node
	if r.isN("let") { // if let Some(x) = …
		r.pos++
		pattern = r.head()
		for r.cur().kind != tEOF && !r.isP("=") && !r.isP("{") {
			r.pos++
		}
		r.eatP("=")
	}
	test := r.head()
	bound, subject := "", test
	if pattern != nil {
		if t, name, _ := r.fits(test, pattern); t != nil {
			test, bound = t, name
		}
	}
	if not {
		test = &Node{Kind: Unary, Name: "!", Off: test.Off, End: test.End, Kids: []*Node{test}}
	}
	n.Kids = []*Node{test, nil, nil}
	if r.lang == Elixir && r.eatP(",") { // if x, do: a, else: b
		for _, at := range []int{1, 2} {
			if r.isN("do") || r.isN("else") {
				r.pos += 2
				n.Kids[at] = r.one(r.expr(0))
				r.eatP(",")
			}
		}
		return r.done(n)
	}
	n.Kids[1] = r.body()
	if bound != "" && bound != "_" {
		n.Kids[1] = replaced(n.Kids[1], bound, subject)
	}
	switch {
	case r.isN("elsif") || r.isN("elseif"):
		n.Kids[2] = r.ifStmt()
		return r.done(n)
	case r.isN("else"):
		r.pos++
		if r.isN("if") {
			n.Kids[2] = r.ifStmt()
			return r.done(n)
		}
		if r.words() {
			n.Kids[2] = r.until("end")
		} else {
			n.Kids[2] = r.body()
		}
	}
	if r.words() {
		r.eatN("end")
	} else if r.lang == PHP && r.isN("endif") {
		r.pos++
	}
	return r.done(n)
}

// head reads the condition of a statement: a block that follows belongs to the
// statement.
func (r *loose) head() *Node {
	saved := r.noIn
	r.noIn = true
	e := r.expr(0)
	if r.words() && e.Is(Name) && r.isP("=") { // if port = x: the name holds what is asked
		a := &Node{Kind: Assign, Name: "=", Off: e.Off, Kids: []*Node{e, nil}}
		r.pos++
		a.Kids[1] = r.expr(0)
		e = r.done(a)
	}
	r.noIn = saved
	if e == nil {
		e = &Node{Kind: Unknown, Off: r.cur().off, End: r.cur().off}
	}
	return e
}

func (r *loose) loop() *Node {
	n := &Node{Kind: Loop, Off: r.cur().off}
	word := r.cur().text
	r.pos++
	if (r.lang == Java || r.lang == PHP) && word == "for" && r.isP("(") {
		if r.counted(n) {
			return r.done(n)
		}
	}
	if r.through(n) {
		return r.done(n)
	}
	switch {
	case r.words():
		n.Kids = append(n.Kids, r.head())
		if r.lang == Ruby && word == "until" {
			n.Kids[0] = &Node{Kind: Unary, Name: "!", Off: n.Kids[0].Off, End: n.Kids[0].End, Kids: []*Node{n.Kids[0]}}
		}
		for r.eatN("in") || r.eatP(",") || r.eatP("<-") {
			n.Kids = append(n.Kids, r.head())
		}
		r.eatN("do")
		n.Kids = append(n.Kids, r.blockToEnd())
		return r.done(n)
	case r.isP("("):
		r.pos++
		for !r.isP(")") && r.cur().kind != tEOF {
			start := r.pos
			if s := r.stmt(); s != nil {
				if s.Is(ExprStmt) {
					s = s.Kids[0]
				}
				n.Kids = append(n.Kids, s)
			}
			if r.isP(":") || r.isN("in") || r.isN("as") {
				r.pos++
			}
			if r.pos == start {
				r.pos++
			}
		}
		r.eatP(")")
	case !r.isP("{"):
		n.Kids = append(n.Kids, r.head())
		if r.eatN("in") {
			n.Kids = append(n.Kids, r.head())
		}
	}
	if len(n.Kids) == 2 { // three would be read as a Python loop
		n.Kids = []*Node{{Kind: Array, Off: n.Off, End: r.end(), Kids: n.Kids}}
	}
	n.Kids = append(n.Kids, r.body())
	return r.done(n)
}

// counted reads for (a; b; c). It leaves all as it was and gives false for any
// other loop.
func (r *loose) counted(n *Node) bool {
	depth, signs := 0, 0
	for i := 0; i < 400; i++ {
		t := r.at(i)
		if t.kind == tEOF || t.kind == tPunct && (t.text == "{" || t.text == "}") && depth < 2 {
			return false
		}
		if t.kind != tPunct {
			continue
		}
		if t.text == "(" {
			depth++
		} else if t.text == ")" {
			if depth--; depth == 0 {
				break
			}
		} else if t.text == ";" {
			signs++
		}
	}
	if signs != 2 {
		return false
	}
	r.pos++
	part := func(last bool) *Node {
		b := &Node{Kind: Block, Off: r.cur().off}
		for r.cur().kind != tEOF && !(last && r.isP(")")) {
			if r.isP(";") {
				r.pos++
				break
			}
			start := r.pos
			semi := false
			if s := r.stmt(); s != nil {
				b.Kids = append(b.Kids, s)
			}
			semi = !last && r.pos > start && r.at(-1).kind == tPunct && r.at(-1).text == ";"
			if semi {
				break
			}
			r.eatP(",")
			if r.pos == start {
				r.pos++
			}
		}
		r.done(b)
		if len(b.Kids) == 1 {
			if b.Kids[0].Is(ExprStmt) && b.Kids[0].Kid(0) != nil {
				return b.Kids[0].Kids[0]
			}
			return b.Kids[0]
		}
		return b
	}
	n.Name = "for"
	n.Kids = []*Node{part(false), part(false), part(true)}
	r.eatP(")")
	n.Kids = append(n.Kids, r.body())
	return true
}

// through reads a loop over what a list or a map holds: for (T x : list),
// foreach ($map as $k => $v), for ((k, v) in map), for k, v in hash. It leaves
// all as it was and gives false for any other loop.
func (r *loose) through(n *Node) bool {
	start := r.pos
	if r.bare[r.cur().off] { // it was read before
		return false
	}
	other := func() bool {
		r.another(start)
		return false
	}
	paren := r.lang != Rust && r.lang != Ruby && r.eatP("(")
	sep, open := 0, 0
	for i := 0; sep == 0 && i < 40; i++ {
		t := r.at(i)
		if t.kind == tEOF || open == 0 && t.kind == tPunct && (t.text == ")" || t.text == "{" || t.text == ";") {
			break
		}
		switch {
		case t.kind == tPunct && (t.text == "(" || t.text == "["):
			open++
		case t.kind == tPunct && (t.text == ")" || t.text == "]"):
			open--
		case open > 0:
		case t.kind == tName && (r.lang == PHP && t.text == "as" || r.lang != PHP && t.text == "in"), t.kind == tPunct && t.text == ":" && (r.lang == Java || r.lang == Groovy):
			sep = i
		}
	}
	if sep == 0 || r.lang == Elixir {
		return other()
	}
	at := r.pos + sep
	target := func(end int) *Node {
		var names []*Node
		list, keyed := false, false
		for ; r.pos < end; r.pos++ {
			switch t := r.cur(); {
			case t.kind == tPunct && t.text == "&" && r.lang == PHP:
				n.Flag |= Address
			case t.kind == tPunct && (t.text == "(" || t.text == "[" || t.text == ","):
				list = list || t.text != "," || r.lang == Ruby
			case t.kind == tPunct && t.text == "=>":
				keyed = true
			case t.kind == tName:
				names = append(names, &Node{Kind: Name, Name: t.text, Off: t.off, End: t.end})
			}
		}
		switch {
		case len(names) == 0, keyed, r.lang == PHP && list && len(names) == 1:
			return nil
		case list && len(names) > 1:
			if names[0].Name == "var" || names[0].Name == "val" {
				names = names[1:]
			}
			return &Node{Kind: Array, Off: names[0].Off, End: names[len(names)-1].End, Kids: names}
		}
		return names[len(names)-1] // what stands before is its type
	}
	var to, over *Node
	saved := r.noIn
	r.noIn = true
	if r.lang == PHP {
		over = r.expr(0)
		if r.pos != at {
			r.noIn = saved
			return other()
		}
		r.pos++
		end := r.pos
		for depth := 0; end < len(r.toks) && r.toks[end].kind != tEOF; end++ {
			if t := r.toks[end]; t.kind == tPunct {
				if t.text == ")" && depth == 0 {
					break
				}
				if t.text == "(" || t.text == "[" {
					depth++
				} else if t.text == ")" || t.text == "]" {
					depth--
				}
				if t.text == "=>" && depth == 0 {
					if k := target(end); k.Is(Name) {
						n.Alias = k.Name
					}
					r.pos = end + 1
				}
			}
		}
		to = target(end)
	} else {
		to = target(at)
		r.pos = at + 1
		over = r.expr(0)
	}
	r.noIn = saved
	if paren {
		for !r.isP(")") && r.cur().kind != tEOF && !r.isP("{") {
			r.pos++
		}
		r.eatP(")")
	}
	if to == nil || over == nil {
		n.Alias, n.Flag = "", 0
		return other()
	}
	n.Name = "of"
	if r.lang == Java || r.lang == Kotlin || r.lang == CSharp {
		to = &Node{Kind: Bind, Name: "loop", Off: to.Off, End: to.End, Kids: []*Node{to, nil}}
	}
	n.Kids = []*Node{to, over}
	if r.words() {
		r.eatN("do")
		n.Kids = append(n.Kids, r.blockToEnd())
	} else {
		n.Kids = append(n.Kids, r.body())
	}
	return true
}

func (r *loose) try() *Node {
	n := &Node{Kind: Try, Off: r.cur().off}
	word := r.cur().text
	r.pos++
	if r.words() {
		if word != "begin" && word != "try" {
			return nil
		}
		r.eatN("do")
		b := r.until("end", "rescue", "catch", "ensure", "else", "after")
		b.Name = "try"
		n.Kids = append(n.Kids, b)
		r.handlers(n)
		r.eatN("end")
		return r.done(n)
	}
	if word == "catch" || word == "finally" {
		if r.isP("(") {
			r.skipBalanced()
		}
		if r.isP("{") {
			return r.braces()
		}
		return nil
	}
	if r.isP("(") { // try (resource)
		p := r.parens()
		if r.lang == Java {
			p.Kids = append(p.Kids, r.body())
		} else {
			n.Kids = append(n.Kids, p)
			p = r.body()
		}
		n.Kids = append(n.Kids, r.done(p))
	} else {
		n.Kids = append(n.Kids, r.body())
	}
	for r.isN("catch") || r.isN("finally") {
		name, takes := r.cur().text, ""
		r.pos++
		if r.isP("(") {
			takes = r.caught()
		}
		k := r.body()
		k.Name, k.Alias = name, takes
		n.Kids = append(n.Kids, k)
	}
	return r.done(n)
}

// caught reads (A | B e): the classes, a colon, the name.
func (r *loose) caught() string {
	start := r.pos
	r.skipBalanced()
	if !r.keepsJumps() {
		return ""
	}
	classes, name := "", ""
	for _, t := range r.toks[start+1 : max(start+1, r.pos-1)] {
		switch {
		case t.kind == tName && t.text == "final":
		case t.kind == tName && (r.lang != PHP || t.text[0] == '$'):
			if name != "" && r.lang == Java {
				classes += name
			}
			name = t.text
		case t.kind == tName:
			classes += t.text
		case t.text == ".":
			classes, name = classes+name+".", ""
		case t.text == "|":
			classes, name = classes+name+",", ""
		}
	}
	return classes + ":" + name
}

// parens reads the statements in parentheses as a block.
func (r *loose) parens() *Node {
	n := &Node{Kind: Block, Off: r.cur().off}
	r.eatP("(")
	for !r.isP(")") && r.cur().kind != tEOF {
		start := r.pos
		r.into(n, r.stmt())
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP(")")
	return r.done(n)
}

// choice reads switch, when, match and case as what it means: one condition
// after another.
func (r *loose) choice() *Node {
	off := r.cur().off
	n := chained(r.arms(), false)
	if (r.lang == Java || r.lang == PHP) && breaksOut(n, r.lang == PHP) { // a break inside leaves the choice
		n = r.done(&Node{Kind: Block, Alias: Chosen, Off: off, Kids: []*Node{n}})
	}
	return n
}

// breaksOut names the jumps that leave a choice, and reports whether there are
// any; in PHP "continue" does.
func breaksOut(n *Node, php bool) (found bool) {
	n.Walk(func(k *Node) bool {
		if k.Is(Jump) && (k.Name == "break" || php && k.Name == "continue") && k.Alias == "" && k.Kids == nil {
			k.Name, k.Alias, found = "break", Chosen, true
		}
		return !k.Is(Loop) && !k.Is(Func) && !k.Is(Class)
	})
	return found
}

// arm is one way of a choice.
type arm struct {
	test *Node // nil: all that no other takes
	body *Node // a block
	off  int32
}

// chained makes conditions of the arms: statements, or an expression.
func chained(arms []arm, value bool) *Node {
	var n *Node
	for i := len(arms) - 1; i >= 0; i-- {
		a := arms[i]
		end := a.off
		if a.body != nil {
			end = a.body.End
		}
		switch {
		case a.test == nil && value:
			n = last(a.body)
		case a.test == nil:
			n = a.body
		case value:
			n = &Node{Kind: Cond, Off: a.off, End: end, Kids: []*Node{a.test, last(a.body), n}}
		default:
			n = &Node{Kind: If, Off: a.off, End: end, Kids: []*Node{a.test, a.body, n}}
		}
	}
	if n == nil {
		n = &Node{Kind: Block}
	}
	return n
}

// either joins two tests.
func either(a, b *Node) *Node {
	if a == nil {
		return b
	}
	if b == nil { // a pattern that could not be read
		b = &Node{Kind: Unknown, Off: a.End, End: a.End}
	}
	return &Node{Kind: Binary, Name: "||", Off: a.Off, End: b.End, Kids: []*Node{a, b}}
}

// results are the functions of Elixir that give a pair or :error: which of the
// pair is what was asked for.
var results = map[string]string{"System.fetch_env": "second", "Integer.parse": "first", "Keyword.fetch": "second", "Map.fetch": "second", "Application.fetch_env": "second"}

// fits is the test that a subject fits a pattern: nil for what fits all. In
// Rust, Ok(x) and Some(x) give the value a name: the second result.
func (r *loose) fits(subject, pattern *Node) (test *Node, name string, all bool) {
	switch {
	case pattern == nil:
		return &Node{Kind: Unknown, Off: r.end(), End: r.end()}, "", false
	case subject == nil: // a condition of its own
		return pattern, "", pattern.Is(True)
	case pattern.Is(Name) && (pattern.Name == "_" || (r.lang == Rust || r.lang == Elixir) && pattern.Name[0] >= 'a' && pattern.Name[0] <= 'z'):
		return nil, pattern.Name, true
	case r.lang == Elixir && pattern.Is(Array) && len(pattern.Kids) == 2 && subject.Is(Call) && results[subject.Kid(0).Dotted()] != "": // {:ok, x}, {n, ""}
		holds := &Node{Kind: Unary, Name: "holds", Off: pattern.Off, End: pattern.End, Kids: []*Node{subject}}
		x := pattern.Kids[map[string]int{"first": 0, "second": 1}[results[subject.Kid(0).Dotted()]]]
		if x.Is(Name) {
			name = x.Name
		}
		return holds, name, false
	case r.lang == Elixir && pattern.Is(String) && pattern.Name == "error" && subject.Is(Call) && results[subject.Kid(0).Dotted()] != "":
		return &Node{Kind: Unary, Name: "!", Off: pattern.Off, End: pattern.End, Kids: []*Node{{Kind: Unary, Name: "holds", Off: pattern.Off, End: pattern.End, Kids: []*Node{subject}}}}, "", false
	case pattern.Is(Name) && pattern.Name == "None", pattern.Is(Null) && r.lang == Rust:
		return &Node{Kind: Unary, Name: "!", Off: pattern.Off, End: pattern.End, Kids: []*Node{{Kind: Unary, Name: "holds", Off: pattern.Off, End: pattern.End, Kids: []*Node{subject}}}}, "", false
	case r.lang == Rust && pattern.Is(Call) && pattern.Kid(0).Is(Name):
		holds := &Node{Kind: Unary, Name: "holds", Off: pattern.Off, End: pattern.End, Kids: []*Node{subject}}
		switch pattern.Kids[0].Name {
		case "Ok", "Some":
			x := pattern.Kid(1)
			switch {
			case x == nil, x.Is(Name):
				if x != nil {
					name = x.Name
				}
				return holds, name, false
			case x.Is(String), x.Is(Number), x.Is(True), x.Is(False): // what is in it is this
				is := &Node{Kind: Binary, Name: "==", Off: x.Off, End: x.End, Kids: []*Node{subject, x}}
				return &Node{Kind: Binary, Name: "&&", Off: pattern.Off, End: pattern.End, Kids: []*Node{holds, is}}, "", false
			case x.Is(Binary) && x.Name == "|":
				var is *Node
				for x.Is(Binary) && x.Name == "|" {
					is = either(&Node{Kind: Binary, Name: "==", Off: x.Off, End: x.End, Kids: []*Node{subject, x.Kid(1)}}, is)
					x = x.Kid(0)
				}
				is = either(&Node{Kind: Binary, Name: "==", Off: x.Off, End: x.End, Kids: []*Node{subject, x}}, is)
				return &Node{Kind: Binary, Name: "&&", Off: pattern.Off, End: pattern.End, Kids: []*Node{holds, is}}, "", false
			}
			return &Node{Kind: Unknown, Off: pattern.Off, End: pattern.End}, "", false
		case "Err":
			return &Node{Kind: Unary, Name: "!", Off: pattern.Off, End: pattern.End, Kids: []*Node{holds}}, "", false
		}
		return &Node{Kind: Unknown, Off: pattern.Off, End: pattern.End}, "", false
	}
	return &Node{Kind: Binary, Name: "==", Off: pattern.Off, End: pattern.End, Kids: []*Node{subject, pattern}}, "", false
}

// arms reads the ways of a choice after its word.
func (r *loose) arms() []arm {
	strict := r.lang == PHP && r.isN("match")
	r.pos++
	var subject *Node
	if (!r.isP("{") || r.words()) && !r.isN("do") && !(r.words() && r.cur().nl) {
		subject = r.head()
	}
	if r.lang == Kotlin && subject.Is(Bind) {
		subject = subject.Kid(1)
	}
	return r.armsOf(subject, strict)
}

// armsOf reads the ways of a choice after its subject, which is asked for once.
func (r *loose) armsOf(subject *Node, strict bool) []arm {
	list := r.ways(subject)
	if !r.keepsJumps() || subject == nil {
		return list
	}
	alias := When
	for _, a := range list {
		a.test.Walk(func(n *Node) bool {
			if n.Is(Binary) && len(n.Kids) == 2 && n.Kids[0] == subject {
				if strict {
					n.Name = "==="
				}
				n.Alias, alias = alias, Again
			}
			return n.Is(Binary) && n.Kids[0] != subject
		})
	}
	return list
}

// ways are the arms of a choice as they are written.
func (r *loose) ways(subject *Node) []arm {
	var list []arm
	switch {
	case r.lang == Ruby:
		patterns, all := false, false
		for r.cur().kind != tEOF && !r.isN("end") {
			start := r.pos
			if r.eatN("in") {
				patterns = true
				a := arm{off: r.cur().off}
				a.test = r.matched(subject)
				r.eatN("then")
				a.body = r.until("end", "in", "else")
				list = append(list, a)
			} else if r.eatN("when") {
				a := arm{off: r.cur().off}
				for {
					saved := r.noIn
					r.noIn = true
					t, _, _ := r.fits(subject, r.expr(0))
					r.noIn = saved
					a.test = either(a.test, t)
					if !r.eatP(",") {
						break
					}
				}
				r.eatN("then")
				a.body = r.until("end", "when", "else")
				list = append(list, a)
			} else if r.eatN("else") {
				off := r.cur().off
				all = true
				list = append(list, arm{nil, r.until("end", "when"), off})
			}
			if r.pos == start {
				r.pos++
			}
		}
		if patterns && !all {
			list = append(list, arm{nil, r.unmatched(), r.cur().off})
		}
		r.eatN("end")
		return list
	case r.lang == Elixir:
		r.eatN("do")
		for r.cur().kind != tEOF && !r.isN("end") {
			start := r.pos
			off := r.cur().off
			t, name, all := r.fits(subject, r.expr(0))
			if r.eatN("when") {
				r.expr(0)
				t, all = &Node{Kind: Unknown, Off: off, End: r.end()}, false
			}
			r.eatP("->")
			body := r.armBody()
			if name != "" && name != "_" && subject != nil {
				body = replaced(body, name, subject)
			}
			if all {
				t = nil
			}
			list = append(list, arm{t, body, off})
			if r.pos == start {
				r.pos++
			}
		}
		r.eatN("end")
		return list
	}
	if !r.eatP("{") {
		return nil
	}
	var pending *Node // of cases that share a body
	var falls []int   // those that go on in the next
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		off := r.cur().off
		a := arm{off: off, test: pending}
		bound := ""
		labelled := r.isN("case") && r.lang != Kotlin && r.lang != Rust
		switch {
		case r.isN("default"), r.isN("else") && r.lang == Kotlin:
			r.pos++
			a.test, labelled = nil, true
		default:
			if labelled {
				r.pos++
			}
			whole := false
			for {
				saved := r.noIn
				r.noIn, r.label = true, labelled
				p := r.expr(1)
				r.noIn, r.label = saved, false
				for r.lang == Rust && p.Is(Binary) && p.Name == "|" {
					t, _, _ := r.fits(subject, p.Kid(1))
					a.test = either(t, a.test)
					p = p.Kid(0)
				}
				t, name, all := r.fits(subject, p)
				whole = whole || all
				if name != "" {
					bound = name
				}
				if !all {
					a.test = either(a.test, t)
				}
				if r.pos == start || !(r.eatP(",") || r.eatP("|")) || r.isP("->") || r.isP("=>") {
					break
				}
			}
			if r.isN("if") || r.isN("when") { // a condition besides
				r.pos++
				on := r.expr(1)
				switch {
				case r.lang != Rust || on == nil || subject == nil || a.test == nil && !whole:
					a.test = &Node{Kind: Unknown, Off: off, End: r.end()}
				default:
					if bound != "" && bound != "_" {
						on = replaced(on, bound, subject)
					}
					if whole {
						a.test = on
					} else {
						a.test = &Node{Kind: Binary, Name: "&&", Off: off, End: r.end(), Kids: []*Node{a.test, on}}
					}
				}
				whole = false
			}
			if whole {
				a.test = nil
			}
		}
		switch {
		case r.eatP("->") || r.eatP("=>"):
			a.body = r.armBody()
			if bound != "" && subject != nil && bound != "_" {
				a.body = replaced(a.body, bound, subject)
			}
			r.eatP(",")
			pending = nil
			list = append(list, a)
		case r.eatP(":"):
			b := &Node{Kind: Block, Off: r.cur().off}
			left := false
			for r.cur().kind != tEOF && !r.isP("}") && !r.isN("case") && !r.isN("default") {
				from := r.pos
				if r.isN("break") && r.at(1).kind == tPunct {
					r.pos++
					left = r.eatP(";") || left
					continue
				}
				left = false
				r.into(b, r.stmt())
				if r.pos == from {
					r.pos++
				}
			}
			a.body = r.done(b)
			if len(b.Kids) == 0 && a.test != nil && (r.isN("case") || r.isN("default")) {
				pending = a.test // falls through to the next
				continue
			}
			if len(b.Kids) > 0 && (r.isN("case") || r.isN("default")) && r.keepsJumps() && !left && !leaves(b) && !b.Kids[len(b.Kids)-1].Is(Jump) {
				falls = append(falls, len(list)) // it goes on in the next case
			}
			pending = nil
			list = append(list, a)
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	for _, i := range slices.Backward(falls) {
		b := list[i].body
		if len(falls) > 12 || i+1 == len(list) || list[i+1].body == nil || len(b.Kids)+len(list[i+1].body.Kids) > 200 { // the way is not followed
			b.Kids = append(b.Kids, &Node{Kind: ExprStmt, Off: b.End, End: b.End, Kids: []*Node{{Kind: Unknown, Off: b.End, End: b.End}}})
			continue
		}
		b.Kids = append(b.Kids, list[i+1].body.Kids...)
	}
	return list
}

// armBody reads what stands behind the arrow of an arm, as a block.
func (r *loose) armBody() *Node {
	if r.lang == Elixir {
		n := &Node{Kind: Block, Off: r.cur().off}
		for r.cur().kind != tEOF && !r.isN("end") && !r.arrowAhead() {
			start := r.pos
			r.into(n, r.stmt())
			if r.pos == start {
				r.pos++
			}
		}
		return r.done(n)
	}
	if r.isP("{") {
		return r.braces()
	}
	n := &Node{Kind: Block, Off: r.cur().off}
	if r.lang == Rust { // an expression up to the comma
		if r.isN("return") || r.isN("continue") || r.isN("break") {
			r.into(n, r.leaving())
			return r.done(n)
		}
		e := r.expr(0)
		if t := r.cur(); e != nil && t.kind == tPunct && assigning[t.text] {
			r.pos++
			value := r.expr(0)
			if t.text == "=" && e.Is(Name) {
				n.Kids = append(n.Kids, r.done(&Node{Kind: Bind, Off: e.Off, Kids: []*Node{e, value}}))
				return r.done(n)
			}
			e = r.done(&Node{Kind: Assign, Name: t.text, Off: e.Off, Kids: []*Node{e, value}})
		}
		if e != nil {
			n.Kids = append(n.Kids, r.done(&Node{Kind: ExprStmt, Off: e.Off, Kids: []*Node{e}}))
		}
		return r.done(n)
	}
	r.into(n, r.stmt())
	return r.done(n)
}

// arrowAhead reports whether an arm of Elixir begins on this line.
func (r *loose) arrowAhead() bool {
	if !r.cur().nl {
		return false
	}
	depth := 0
	for i := 0; i < 60; i++ {
		t := r.at(i)
		if t.kind == tEOF || i > 0 && t.nl && depth == 0 {
			return false
		}
		if t.kind == tName && (t.text == "fn" || t.text == "do") {
			return false
		}
		if t.kind != tPunct {
			continue
		}
		switch t.text {
		case "(", "[", "{":
			depth++
		case ")", "]", "}":
			depth--
		case "->":
			return depth == 0
		}
	}
	return false
}

// replaced puts an expression in the place of a name that a pattern binds.
func replaced(n *Node, name string, by *Node) *Node {
	if n == nil {
		return nil
	}
	if n.Is(Name) && n.Name == name {
		return by
	}
	c := *n
	c.Kids = make([]*Node, len(n.Kids))
	for i, k := range n.Kids {
		c.Kids[i] = replaced(k, name, by)
	}
	return &c
}

func (r *loose) leaving() *Node {
	t := r.cur()
	n := &Node{Kind: Return, Off: t.off}
	switch {
	case t.text == "throw" || t.text == "raise":
		n.Kind = Throw
	case !r.keepsJumps() || t.text == "return":
	case t.text == "break" || t.text == "continue" || t.text == "next" || t.text == "yield":
		n.Kind, n.Name = Jump, t.text
		if t.text == "next" {
			n.Name = "continue"
		}
	}
	r.pos++
	if n.Is(Jump) && r.lang == Java && n.Name != "yield" && r.cur().kind == tName {
		n.Alias = r.cur().text
		r.pos++
	}
	if n.Name == "yield" && r.lang == PHP && r.isN("from") {
		n.Alias = "from"
		r.pos++
	}
	if r.cur().kind != tEOF && !r.isP(";") && !r.isP("}") && !(r.lines() && r.cur().nl) && !r.isN("if") && !r.isN("unless") {
		n.Kids = []*Node{r.assigned(r.expr(0))}
		if n.Name == "yield" && r.lang == PHP && r.eatP("=>") { // a key, and the value behind it
			n.Kids = []*Node{r.expr(0), n.Kids[0]}
		}
		if r.lang == Ruby && r.isP(",") && n.Kind != Throw && n.Kids[0] != nil { // several values
			list := &Node{Kind: Array, Off: n.Kids[0].Off, Kids: n.Kids}
			for r.eatP(",") {
				if e := r.expr(0); e != nil {
					list.Kids = append(list.Kids, e)
				}
			}
			n.Kids = []*Node{r.done(list)}
		}
		if r.lang == Ruby && n.Kind == Throw && r.isP(",") { // raise ArgumentError, "…"
			made := &Node{Kind: Call, Off: n.Kids[0].at(), Kids: []*Node{r.done(&Node{Kind: Member, Name: "new", Off: n.Kids[0].at(), Kids: n.Kids})}}
			for r.eatP(",") {
				if e := r.expr(0); e != nil {
					made.Kids = append(made.Kids, e)
				}
			}
			n.Kids = []*Node{r.done(made)}
		}
		if level := n.Kids[0]; n.Is(Jump) && r.lang == PHP && n.Name != "yield" && level.Is(Number) {
			if k, err := strconv.Atoi(level.Name); err == nil && k > 1 {
				r.jumps = append(r.jumps, &jump{n, k})
			} else {
				n.Kids = nil
			}
		}
	} else {
		n.Kids = []*Node{nil}
	}
	if n.Is(Jump) && n.Kids[0] == nil {
		n.Kids = nil
	}
	s := r.tail(r.done(n))
	if n.Is(Return) && t.text != "return" {
		if n.Kids[0] == nil {
			return nil
		}
		return &Node{Kind: ExprStmt, Off: n.Off, End: n.End, Kids: n.Kids}
	}
	return s
}

// at is where a node begins; 0 for none.
func (n *Node) at() int32 {
	if n == nil {
		return 0
	}
	return n.Off
}

// keepsJumps tells the languages whose programs are gone through: there it
// counts where a loop is left.
func (r *loose) keepsJumps() bool { return r.lang == Ruby || r.lang == Java || r.lang == PHP }

// tail puts a statement under the condition that stands behind it (Ruby).
func (r *loose) tail(s *Node) *Node {
	for r.lang == Ruby && !r.cur().nl && (r.isN("if") || r.isN("unless") || r.isN("while") || r.isN("until") || r.isN("rescue")) {
		word := r.cur().text
		r.pos++
		test := r.expr(0)
		if test == nil {
			break
		}
		if word == "until" {
			test = &Node{Kind: Unary, Name: "!", Off: test.Off, End: test.End, Kids: []*Node{test}}
		}
		switch word {
		case "rescue":
			e := s
			if s.Is(ExprStmt) {
				e = s.Kid(0)
			}
			s = r.done(&Node{Kind: ExprStmt, Off: s.Off, Kids: []*Node{r.done(&Node{Kind: Binary, Name: "rescue", Off: s.Off, Kids: []*Node{e, test}})}})
		case "while", "until":
			name := ""
			if s.Is(Try) || s.Is(Block) { // begin … end while: once at least
				name = "do"
			}
			s = r.done(&Node{Kind: Loop, Name: name, Off: s.Off, Kids: []*Node{test, {Kind: Block, Off: s.Off, End: s.End, Kids: []*Node{s}}}})
		case "unless":
			test = &Node{Kind: Unary, Name: "!", Off: test.Off, End: test.End, Kids: []*Node{test}}
			fallthrough
		case "if":
			s = r.done(&Node{Kind: If, Off: s.Off, Kids: []*Node{test, {Kind: Block, Off: s.Off, End: s.End, Kids: []*Node{s}}, nil}})
		}
	}
	r.eatP(";")
	return s
}

// class reads a class, a module, a trait, an implementation.
func (r *loose) class() *Node {
	n := &Node{Kind: Class, Off: r.cur().off}
	word := r.cur().text
	if r.lang == Rust {
		n.Alias = word
	}
	r.pos++
	if r.lang == Ruby && word == "class" && r.isP("<<") { // class << self: methods of the class around
		r.pos++
		r.expr(16)
		b := r.blockToEnd()
		for _, k := range b.Kids {
			if k.Is(Func) {
				k.Flag |= Static
			}
		}
		return r.done(b)
	}
	if word == "enum" && r.isN("class") || word == "record" && (r.isN("class") || r.isN("struct")) {
		r.pos++
	}
	if r.isP("<") {
		r.generics()
	}
	if r.cur().kind == tName && !r.isN("extends") && !r.isN("do") {
		name := r.dotted()
		if n.Name = name.Dotted(); word != "defmodule" && word != "namespace" {
			n.Name = name.Name
		}
	}
	bases := &Node{Kind: Array, Off: r.cur().off, End: r.cur().off}
	var ps *Node
	for r.cur().kind != tEOF && !r.isP("{") && !r.isP(";") && !r.isN("do") && !(r.words() && r.cur().nl) && !(r.lang == Kotlin && r.cur().nl && !r.isP(":") && !r.isP("(")) {
		switch {
		case r.isP("(") && ps == nil && bases.Kids == nil:
			ps = r.params()
			continue
		case r.isP("("):
			r.skipBalanced()
			continue
		case r.isN("permits") && r.lang == Java: // what may come from it
			for r.cur().kind != tEOF && !r.isP("{") {
				r.pos++
			}
			continue
		case r.cur().kind == tName && !r.isN("extends") && !r.isN("implements") && !r.isN("for") && !r.isN("where") && !r.isN("with"):
			bases.Kids = append(bases.Kids, r.dotted())
			continue
		case r.isN("for") && word == "impl" && r.at(1).kind == tName: // impl Trait for Type
			r.pos++
			n.Name = r.dotted().Name
			continue
		}
		r.pos++
	}
	n.Kids = []*Node{bases, nil}
	switch {
	case r.lang == Elixir:
		r.eatN("do")
		n.Kids[1] = r.blockToEnd()
	case r.lang == Ruby:
		n.Kids[1] = r.blockToEnd()
	case r.isP("{"):
		var constants []*Node
		if word == "enum" && (r.lang == Java || r.lang == Kotlin) {
			constants = r.constants(n.Name)
		}
		if r.lang == Rust && word == "struct" {
			n.Kids[1] = r.fields()
		} else {
			n.Kids[1] = r.classBody(n.Name)
		}
		n.Kids[1].Kids = append(constants, n.Kids[1].Kids...)
	default: // a namespace for the rest of the file, a record without a body
		r.eatP(";")
		n.Kids[1] = &Node{Kind: Block, Off: r.end(), End: r.end()}
	}
	if ps != nil && n.Kids[1] != nil && (r.lang == Kotlin || r.lang == Java || r.lang == CSharp) { // its parameters are fields
		for _, p := range ps.Kids {
			p.Flag |= Exported
		}
		n.Kids[1].Kids = append([]*Node{{Kind: Func, Name: "constructor", Off: ps.Off, End: ps.End, Kids: []*Node{ps, {Kind: Block, Off: ps.End, End: ps.End}}}}, n.Kids[1].Kids...)
	}
	if word == "object" && n.Name == "" && r.lang == Kotlin { // a companion: its members are the class's
		return n.Kids[1]
	}
	if word == "namespace" || word == "mod" {
		// What is in it is as good as at the top.
		b := n.Kids[1]
		if r.lang == PHP {
			name := &Node{Kind: Call, Off: n.Off, End: b.Off, Kids: []*Node{{Kind: Name, Name: word, Off: n.Off, End: n.Off}, {Kind: String, Name: n.Name, Off: n.Off, End: b.Off}}}
			b.Kids = append([]*Node{{Kind: ExprStmt, Off: n.Off, End: b.Off, Kids: []*Node{name}}}, b.Kids...)
		}
		return b
	}
	if n.Kids[1] != nil {
		for _, k := range n.Kids[1].Kids {
			if k.Is(Func) {
				k.Flag |= Method
			}
		}
	}
	return r.done(n)
}

// constants reads those of an enumeration, as objects of it; the brace is left
// to be read.
func (r *loose) constants(class string) []*Node {
	var list []*Node
	brace := r.pos
	r.pos++
	for r.cur().kind == tName || r.isP("@") {
		r.marks()
		name := &Node{Kind: Name, Name: r.cur().text, Off: r.cur().off, End: r.cur().end}
		r.pos++
		obj := &Node{Kind: New, Off: name.Off, Kids: []*Node{{Kind: Name, Name: class, Off: name.Off, End: name.End}}}
		if r.isP("(") {
			r.arguments(obj)
		}
		obj.Alias = name.Name
		if r.isP("{") && r.lang == Java { // methods of its own
			b := r.braces()
			obj.Kids = append(obj.Kids, &Node{Kind: Func, Off: b.Off, End: b.End, Kids: []*Node{{Kind: Params, Off: b.Off, End: b.Off}, b}})
		} else if r.isP("{") {
			r.skipBalanced()
		}
		list = append(list, r.done(&Node{Kind: Bind, Name: "const", Off: name.Off, Kids: []*Node{name, r.done(obj)}}))
		if !r.eatP(",") {
			break
		}
	}
	if !r.isP(";") && !r.isP("}") {
		r.pos = brace // something else
		return nil
	}
	r.pos--
	r.toks[r.pos] = r.toks[brace]
	return list
}

// fields reads the fields of a struct of Rust, with their attributes. Alias of
// each is the name of its type.
func (r *loose) fields() *Node {
	n := &Node{Kind: Block, Off: r.cur().off}
	r.eatP("{")
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		marks := r.marks()
		if r.isN("pub") {
			r.pos++
			if r.isP("(") {
				r.skipBalanced()
			}
		}
		if t := r.cur(); t.kind == tName && r.at(1).kind == tPunct && r.at(1).text == ":" {
			b := &Node{Kind: Bind, Name: "let", Off: t.off, Kids: append([]*Node{{Kind: Name, Name: t.text, Off: t.off, End: t.end}, nil}, marks...)}
			r.pos += 2
			depth := 0
			for r.cur().kind != tEOF && !(depth <= 0 && (r.isP(",") || r.isP("}"))) {
				switch t := r.cur(); {
				case t.kind == tName && b.Alias == "":
					b.Alias = t.text
				case t.kind == tPunct && (t.text == "<" || t.text == "(" || t.text == "["):
					depth++
				case t.kind == tPunct && (t.text == ">" || t.text == ")" || t.text == "]"):
					depth--
				case t.kind == tPunct && t.text == ">>":
					depth -= 2
				}
				r.pos++
			}
			n.Kids = append(n.Kids, r.done(b))
		}
		r.eatP(",")
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	return r.done(n)
}

// classBody reads members; a name with parameters and a block is the
// constructor.
func (r *loose) classBody(name string) *Node {
	n := &Node{Kind: Block, Off: r.cur().off}
	r.eatP("{")
	for !r.isP("}") && r.cur().kind != tEOF {
		start := r.pos
		at := 0
		for modifiers[r.at(at).text] {
			at++
		}
		if r.at(at).kind == tName && r.at(at).text == name && name != "" && r.at(at+1).kind == tPunct && r.at(at+1).text == "(" {
			f := &Node{Kind: Func, Name: name, Off: r.cur().off}
			r.pos += at + 1
			f.Kids = []*Node{r.params(), nil}
			for r.cur().kind != tEOF && !r.isP("{") && !r.isP(";") && !r.isP("=>") && !r.isP("}") {
				if r.isP("(") {
					r.skipBalanced()
					continue
				}
				r.pos++
			}
			f.Kids[1] = r.body()
			r.into(n, r.done(f))
		} else if r.lang == PHP && r.isN("case") && r.at(1).kind == tName { // of an enumeration
			r.pos++
			at := r.cur()
			b := &Node{Kind: Bind, Name: "const", Off: at.off, Kids: []*Node{{Kind: Name, Name: at.text, Off: at.off, End: at.end}, nil}}
			r.pos++
			if r.eatP("=") {
				b.Kids[1] = r.expr(0)
			}
			r.eatP(";")
			r.into(n, r.done(b))
		} else {
			r.into(n, r.stmt())
		}
		if r.pos == start {
			r.pos++
		}
	}
	r.eatP("}")
	return r.done(n)
}

// typed reads `Type name = value` and `Type name(parameters) { … }`; nil where
// the statement is neither, with nothing read.
func (r *loose) typed() *Node {
	start := r.pos
	off := r.cur().off
	fail := func() *Node { r.pos = start; return nil }
	if r.isP("<") && r.lang == Java { // <T> T name(…)
		if !r.generics() {
			return fail()
		}
	}
	if r.cur().kind != tName || r.isN("new") || r.isN("await") || r.isN("yield") {
		return fail()
	}
	first := r.pos
	r.dotted()
	if r.isP("<") {
		r.generics()
	}
	for r.isP("[") && r.at(1).kind == tPunct && r.at(1).text == "]" {
		r.pos += 2
	}
	if r.isP("?") && r.at(1).kind == tName {
		r.pos++
	}
	if r.cur().kind != tName || r.cur().nl && r.lang == Groovy {
		return fail()
	}
	name := r.cur()
	next := r.at(1)
	if next.kind != tPunct {
		return fail()
	}
	switch next.text {
	case "=", ";", ",", ":", "{":
		if next.text == "{" && r.lang != CSharp || next.text == "," && r.lang == Groovy || next.text == ":" && r.lang != Java {
			return fail()
		}
		r.pos++
		b := &Node{Kind: Bind, Name: "let", Off: off, Kids: []*Node{{Kind: Name, Name: name.text, Off: name.off, End: name.end}, nil}}
		if r.isP("{") { // a property: { get; set; } = value
			r.skipBalanced()
		}
		if r.eatP("=") {
			b.Kids[1] = r.expr(0)
		} else if r.eatP("=>") {
			b.Kids[1] = r.expr(0)
		}
		if r.lang == Java {
			b.Alias = r.toks[first].text
		}
		r.done(b)
		if r.lang == Java && r.isP(",") && r.at(1).kind == tName { // int a = 1, b = 2
			several := &Node{Kind: Block, Name: ",", Off: off, Kids: []*Node{b}}
			for r.isP(",") && r.at(1).kind == tName {
				r.pos++
				x := r.cur()
				k := &Node{Kind: Bind, Name: "let", Alias: b.Alias, Off: x.off, Kids: []*Node{{Kind: Name, Name: x.text, Off: x.off, End: x.end}, nil}}
				r.pos++
				if r.eatP("=") {
					k.Kids[1] = r.expr(0)
				}
				several.Kids = append(several.Kids, r.done(k))
			}
			r.eatP(";")
			return r.done(several)
		}
		if r.isP(";") {
			r.pos++
		}
		return r.done(b)
	case "=>": // a property that is computed
		r.pos += 2
		b := &Node{Kind: Bind, Name: "let", Off: off, Kids: []*Node{{Kind: Name, Name: name.text, Off: name.off, End: name.end}, r.expr(0)}}
		r.eatP(";")
		return r.done(b)
	case "(":
		// A function has a block, an arrow or nothing behind its parameters.
		depth, i := 0, 1
		for ; i < 400; i++ {
			t := r.at(i)
			if t.kind == tEOF {
				return fail()
			}
			if t.kind == tPunct && t.text == "(" {
				depth++
			}
			if t.kind == tPunct && t.text == ")" {
				if depth--; depth == 0 {
					break
				}
			}
		}
		after := r.at(i + 1)
		if !(after.kind == tPunct && (after.text == "{" || after.text == "=>" || after.text == ";") || after.kind == tName && (after.text == "throws" || after.text == "where")) {
			return fail()
		}
		r.pos++
		f := &Node{Kind: Func, Name: name.text, Off: off, Kids: []*Node{r.params(), nil}}
		for r.cur().kind != tEOF && !r.isP("{") && !r.isP(";") && !r.isP("=>") {
			r.pos++
		}
		if r.eatP("=>") {
			e := r.expr(0)
			f.Kids[1] = &Node{Kind: Block, Off: off, End: r.end(), Kids: []*Node{{Kind: Return, Off: off, End: r.end(), Kids: []*Node{e}}}}
			r.eatP(";")
		} else if r.isP("{") {
			f.Kids[1] = r.braces()
		} else {
			r.eatP(";")
			f.Kids[1] = &Node{Kind: Block, Off: r.end(), End: r.end()}
		}
		return r.done(f)
	}
	return fail()
}

// structClass makes a class of Name = Struct.new(:a, :b) do … end, and of
// Data.define likewise (Ruby 3.4, "Struct" and "Data"): its initialize takes
// the fields. nil for anything else, and without a block.
func structClass(name, call *Node) *Node {
	if !call.Is(Call) || !call.Kid(0).Is(Member) || len(call.Kids) < 3 {
		return nil
	}
	block := call.Kids[len(call.Kids)-1]
	if d := call.Kids[0].Kid(0).Dotted() + "." + call.Kids[0].Name; d != "Struct.new" && d != "Data.define" || !block.Is(Func) || !block.Kid(1).Is(Block) {
		return nil
	}
	init := &Node{Kind: Func, Name: "initialize", Flag: Method, Off: call.Off, End: call.End}
	params := &Node{Kind: Params, Off: call.Off, End: call.Off}
	body := &Node{Kind: Block, Off: call.Off, End: call.Off}
	for _, a := range call.Kids[1 : len(call.Kids)-1] {
		if !a.Is(String) {
			continue
		}
		null := &Node{Kind: Null, Off: a.Off, End: a.End}
		params.Kids = append(params.Kids, &Node{Kind: Param, Name: a.Name, Off: a.Off, End: a.End, Kids: []*Node{null, nil}})
		self := &Node{Kind: Member, Name: a.Name, Off: a.Off, End: a.End, Kids: []*Node{{Kind: Name, Name: "self", Off: a.Off, End: a.Off}}}
		set := &Node{Kind: Assign, Name: "=", Off: a.Off, End: a.End, Kids: []*Node{self, {Kind: Name, Name: a.Name, Off: a.Off, End: a.End}}}
		body.Kids = append(body.Kids, &Node{Kind: ExprStmt, Off: a.Off, End: a.End, Kids: []*Node{set}})
	}
	init.Kids = []*Node{params, body}
	inside := &Node{Kind: Block, Off: block.Off, End: block.End, Kids: append([]*Node{init}, block.Kids[1].Kids...)}
	for _, m := range inside.Kids {
		if m.Is(Func) {
			m.Flag |= Method
		}
	}
	return &Node{Kind: Class, Name: name.Name, Alias: Structure, Off: name.Off, Kids: []*Node{{Kind: Array, Off: name.Off, End: name.Off}, inside}}
}

// targets reads the rest of the names that are set at once, up to the sign; nil,
// and nothing read, where it is something else.
func (r *loose) targets(first *Node) *Node {
	start := r.pos
	if r.bare[r.cur().off] { // it was read before
		return nil
	}
	none := func() *Node {
		r.another(start)
		return nil
	}
	list := &Node{Kind: Array, Off: first.Off, Kids: []*Node{first}}
	for r.eatP(",") {
		star := r.cur().off
		splat := r.eatP("*")
		e := r.expr(0)
		if !e.Is(Name) && !e.Is(Member) && !e.Is(Index) && !(e.Is(Array) && e.Name == "" && !splat) {
			return none()
		}
		if splat {
			e = &Node{Kind: Spread, Off: star, End: e.End, Kids: []*Node{e}}
		}
		list.Kids = append(list.Kids, e)
	}
	if !r.isP("=") {
		return none()
	}
	return r.done(list)
}

// rescued reads `x rescue y` of Ruby: y where x raises an error.
func (r *loose) rescued(e *Node) *Node {
	if e == nil || r.lang != Ruby || !r.isN("rescue") || r.cur().nl {
		return e
	}
	r.pos++
	alt := r.expr(0)
	return r.done(&Node{Kind: Binary, Name: "rescue", Off: e.Off, Kids: []*Node{e, alt}})
}

var assigning = map[string]bool{"=": true, "+=": true, "-=": true, "*=": true, "||=": true, "??=": true, "&&=": true, "//=": true, "**=": true, "<<=": true, ">>=": true, "&=": true, "|=": true, "^=": true}

// simple reads an expression statement or an assignment.
func (r *loose) simple() *Node {
	off := r.cur().off
	start := r.pos
	e := r.expr(0)
	if e == nil {
		if r.pos == start {
			r.pos++
		}
		return nil
	}
	if r.lang == Ruby && r.isP(",") && (e.Is(Name) || e.Is(Member) || e.Is(Index) || e.Is(Spread) && e.Name == "") { // a, b = x, y
		if targets := r.targets(e); targets != nil {
			r.pos++
			shared := r.shared
			value := r.rescued(r.expr(0))
			if value == nil {
				value = &Node{Kind: Unknown, Off: r.end(), End: r.end()}
			}
			if r.isP(",") {
				value = &Node{Kind: Array, Off: value.Off, End: value.End, Kids: []*Node{value}}
				for r.eatP(",") {
					if k := r.expr(0); k != nil {
						value.Kids = append(value.Kids, k)
					}
				}
				r.done(value)
			}
			if !slices.ContainsFunc(targets.Kids, func(n *Node) bool {
				return !n.Is(Name) && !n.Is(Spread) && !n.Is(Array) || n.Is(Name) && n.Name[0] == '@'
			}) {
				return r.tail(r.done(&Node{Kind: Bind, Off: off, Kids: []*Node{targets, value}}))
			}
			group := &Node{Kind: Block, Off: off}
			nested := r.shared > shared
			r.shared++
			for i, t := range targets.Kids {
				if nested && i > 0 && !(value.Is(Array) && i < len(value.Kids)) {
					// One that itself has such a value in it would be gone through
					// twice as often at each level.
					value = &Node{Kind: Unknown, Off: value.Off, End: value.End}
				}
				v := &Node{Kind: Index, Off: value.Off, End: value.End, Kids: []*Node{value, {Kind: Number, Name: itoa(i), Off: value.Off, End: value.End}}}
				if value.Is(Array) && i < len(value.Kids) {
					v = value.Kids[i]
				}
				a := &Node{Kind: Assign, Name: "=", Off: off, End: r.end(), Kids: []*Node{t, v}}
				group.Kids = append(group.Kids, &Node{Kind: ExprStmt, Off: off, End: r.end(), Kids: []*Node{a}})
			}
			return r.tail(r.done(group))
		}
	}
	if r.lang == Ruby && r.isP("=>") && !r.cur().nl { // value => pattern
		r.pos++
		test := r.matched(e)
		return r.tail(r.done(&Node{Kind: If, Off: off, Kids: []*Node{{Kind: Unary, Name: "!", Off: off, End: r.end(), Kids: []*Node{test}}, r.unmatched(), nil}}))
	}
	if t := r.cur(); t.kind == tPunct && assigning[t.text] {
		if e.Is(Call) && r.lang == PHP && e.Kid(0).Is(Name) && e.Kids[0].Name == "list" {
			e.Kind, e.Kids = Array, e.Kids[1:] // list($a, $b) = …, list('a' => $a) = …
			for i, k := range e.Kids {
				if k.Is(Keyword) {
					e.Kids[i] = &Node{Kind: Pair, Name: k.Name, Off: k.Off, End: k.End, Kids: k.Kids}
				}
			}
		}
		r.pos++
		value := r.rescued(r.assigned(r.expr(0)))
		if r.lang == Ruby && r.isP(",") && value != nil { // a = 1, 2
			value = &Node{Kind: Array, Off: value.Off, Kids: []*Node{value}}
			for r.eatP(",") {
				if e := r.expr(0); e != nil {
					value.Kids = append(value.Kids, e)
				}
			}
			r.done(value)
		}
		if e.Is(Name) && r.lang == Ruby && t.text == "=" {
			if class := structClass(e, value); class != nil {
				return r.tail(r.done(class))
			}
		}
		if e.Is(Name) || r.lang == PHP && (e.Is(Array) || e.Is(Object)) {
			b := &Node{Kind: Bind, Off: off, Kids: []*Node{e, value}}
			if t.text != "=" {
				b = &Node{Kind: ExprStmt, Off: off, Kids: []*Node{r.done(&Node{Kind: Assign, Name: t.text, Off: off, Kids: []*Node{e, value}})}}
			}
			return r.tail(r.done(b))
		}
		a := r.done(&Node{Kind: Assign, Name: t.text, Off: off, Kids: []*Node{e, value}})
		return r.tail(r.done(&Node{Kind: ExprStmt, Off: off, Kids: []*Node{a}}))
	}
	return r.tail(r.done(&Node{Kind: ExprStmt, Off: off, Kids: []*Node{r.rescued(e)}}))
}
