package rust

import (
	"fmt"
	"slices"
	"strings"
)

// maxNesting limits how deep source may be nested.
const maxNesting = 150

// parser reads tokens. What it cannot read it leaves with a fault, which the next item
// around it catches.
type parser struct {
	toks  []token
	i     int
	bare  bool // a brace begins a block, and no value of a structure
	depth int
	split int32 // how many signs of the token at hand were taken
}

// fault is what cannot be read, and where.
type fault struct {
	off int32
	why string
}

func (f fault) Error() string { return f.why }

// Read reads a source file. It never fails: an item that cannot be read is left out, a
// function whose body cannot be says so.
func Read(src []byte) *File {
	p := &parser{toks: lex(string(src))}
	f := &File{}
	p.inner()
	for p.cur().kind != tEnd {
		at := p.i
		if it := p.guarded(); it != nil {
			f.Items = append(f.Items, it)
		}
		if p.i == at {
			p.i++
		}
	}
	return f
}

// guarded reads an item; nil where it could not, and then it is behind it.
func (p *parser) guarded() (it *Item) {
	at, depth := p.i, p.depth
	defer func() {
		switch r := recover().(type) {
		case nil:
		case fault:
			p.i, p.depth, p.bare, p.split = at, depth, false, 0
			p.over()
			it = nil
		default:
			panic(r)
		}
	}()
	return p.item()
}

// over steps over an item: up to its semicolon, or the brace that closes it.
func (p *parser) over() {
	depth := 0
	for ; p.cur().kind != tEnd; p.i++ {
		if p.cur().kind != tPunct {
			continue
		}
		switch p.cur().text {
		case "(", "[", "{":
			depth++
		case ")", "]", "}":
			if depth--; depth < 0 {
				return
			}
			if depth == 0 && p.cur().text == "}" {
				p.i++
				return
			}
		case ";":
			if depth == 0 {
				p.i++
				return
			}
		}
	}
}

func (p *parser) cur() token {
	t := p.at(0)
	if p.split > 0 {
		t.text, t.off = t.text[p.split:], t.off+p.split
	}
	return t
}

func (p *parser) at(n int) token {
	if p.i+n < len(p.toks) {
		return p.toks[p.i+n]
	}
	return p.toks[len(p.toks)-1]
}

func (p *parser) next() token {
	t := p.cur()
	p.split = 0
	if p.i < len(p.toks)-1 {
		p.i++
	}
	return t
}

// end is behind what was taken last.
func (p *parser) end() int32 {
	if p.i == 0 {
		return 0
	}
	return p.toks[p.i-1].end
}

func (p *parser) fail(why string, args ...any) {
	panic(fault{p.cur().off, fmt.Sprintf(why, args...)})
}

func (p *parser) is(text string) bool {
	t := p.cur()
	return t.kind == tPunct && t.text == text
}

func (p *parser) isWord(text string) bool {
	t := p.cur()
	return t.kind == tWord && t.text == text
}

func (p *parser) wordAt(n int, text string) bool {
	t := p.at(n)
	return t.kind == tWord && t.text == text
}

func (p *parser) signAt(n int, text string) bool {
	t := p.at(n)
	return t.kind == tPunct && t.text == text
}

func (p *parser) eat(text string) bool {
	if p.is(text) {
		p.next()
		return true
	}
	return false
}

func (p *parser) eatWord(text string) bool {
	if p.isWord(text) {
		p.next()
		return true
	}
	return false
}

func (p *parser) want(text string) {
	if !p.eat(text) {
		p.fail("%q is not there", text)
	}
}

func (p *parser) word() string {
	if p.cur().kind != tWord {
		p.fail("a name is not there")
	}
	return p.next().text
}

// half takes one sign of a token that several stand in: of >>, ||, &&.
func (p *parser) half(sign string) bool {
	t := p.cur()
	if t.kind != tPunct || !strings.HasPrefix(t.text, sign) {
		return false
	}
	if len(t.text) == len(sign) {
		p.next()
	} else {
		p.split += int32(len(sign))
	}
	return true
}

func (p *parser) down() {
	if p.depth++; p.depth > maxNesting {
		p.fail("nested too deep")
	}
}

func (p *parser) up() { p.depth-- }

// inner steps over attributes of what is around: #![…].
func (p *parser) inner() {
	for p.is("#") && p.signAt(1, "!") && p.signAt(2, "[") {
		p.i += 2
		p.skip()
	}
}

// skip steps over what stands in brackets.
func (p *parser) skip() {
	depth := 0
	for p.cur().kind != tEnd {
		t := p.next()
		if t.kind != tPunct {
			continue
		}
		switch t.text {
		case "(", "[", "{":
			depth++
		case ")", "]", "}":
			if depth--; depth <= 0 {
				return
			}
		}
	}
}

// inBrackets are the tokens between the brackets that begin here, which are taken.
func (p *parser) inBrackets() []token {
	from := p.i + 1
	p.skip()
	return slices.Clone(p.toks[min(from, len(p.toks)):max(from, p.i-1)])
}

// within reads tokens as a source of its own.
func (p *parser) within(toks []token) *parser {
	end := int32(0)
	if len(toks) > 0 {
		end = toks[len(toks)-1].end
	}
	return &parser{toks: append(slices.Clone(toks), token{off: end, end: end}), depth: p.depth}
}

func (p *parser) attributes() (list []*Attr) {
	for p.is("#") && (p.signAt(1, "[") || p.signAt(1, "!") && p.signAt(2, "[")) {
		p.next()
		p.eat("!")
		q := p.within(p.inBrackets())
		a := &Attr{}
		for q.cur().kind == tWord || q.is("::") {
			a.Path += q.next().text
		}
		switch {
		case q.is("(") || q.is("["):
			a.Args = q.within(q.inBrackets()).attrArgs()
		case q.eat("="):
			if q.cur().kind == tText {
				a.Text = q.cur().text
			}
		}
		list = append(list, a)
	}
	return list
}

// attrArgs reads what an attribute is given; what cannot be read ends it.
func (p *parser) attrArgs() (list []AttrArg) {
	defer func() {
		if r := recover(); r != nil {
			if _, ok := r.(fault); !ok {
				panic(r)
			}
		}
	}()
	for p.cur().kind != tEnd {
		a := AttrArg{}
		if p.cur().kind == tWord {
			for p.cur().kind == tWord || p.is("::") {
				a.Name += p.next().text
			}
		} else {
			a.Value = p.expr()
		}
		switch {
		case p.eat("="):
			a.Value = p.expr()
		case p.is("("):
			q := p.within(p.inBrackets())
			a.Args = q.attrArgs()
			if len(a.Args) == 1 && a.Args[0].Name == "" {
				a.Value = a.Args[0].Value
			}
		}
		list = append(list, a)
		if !p.eat(",") {
			return list
		}
	}
	return list
}

// forTests reports whether attributes keep an item out of the program: #[cfg(test)],
// #[test].
func forTests(attrs []*Attr) bool {
	for _, a := range attrs {
		if a.Path == "test" || a.Path == "tokio::test" || a.Path == "cfg" && len(a.Args) == 1 && (a.Args[0].Name == "test" || foreign(a.Args[0])) {
			return true
		}
	}
	return false
}

// foreign reports whether a condition holds on other systems than a host's.
func foreign(a AttrArg) bool {
	is := func(a AttrArg, name string) bool {
		return a.Name == name || (a.Name == "target_os" || a.Name == "target_family") && a.Value != nil && a.Value.Text == name
	}
	switch {
	case a.Name == "not" && len(a.Args) == 1:
		return is(a.Args[0], "unix") || is(a.Args[0], "linux")
	}
	return is(a, "windows") || is(a, "macos") || is(a, "wasm32") || a.Name == "target_arch" && a.Value != nil && a.Value.Text == "wasm32"
}

// item reads an item; nil for one that is no part of the program.
func (p *parser) item() *Item {
	p.down()
	defer p.up()
	off := p.cur().off
	attrs := p.attributes()
	if p.eatWord("pub") && p.is("(") && (p.wordAt(1, "crate") || p.wordAt(1, "super") || p.wordAt(1, "self") || p.wordAt(1, "in")) {
		p.skip()
	}
	it := p.itemHere()
	if it == nil {
		return nil
	}
	it.Attrs, it.Off, it.End = attrs, off, p.end()
	if forTests(attrs) {
		return nil
	}
	return it
}

func (p *parser) itemHere() *Item {
	it := &Item{}
	switch {
	case p.isFn():
		it.Kind = FnItem
		it.Fn = p.fn()
		it.Name = it.Fn.Name
	case p.isWord("struct") || p.isWord("union") && p.at(1).kind == tWord:
		p.next()
		it.Kind, it.Name = StructItem, p.word()
		it.Generics = p.generics()
		p.where()
		switch {
		case p.is("{"):
			it.Fields = p.fields()
		case p.is("("):
			it.Tuple, it.Fields = true, p.places()
			p.where()
			p.eat(";")
		default:
			it.Tuple = true
			p.eat(";")
		}
	case p.isWord("enum"):
		p.next()
		it.Kind, it.Name = EnumItem, p.word()
		it.Generics = p.generics()
		p.where()
		p.want("{")
		for !p.eat("}") {
			v := Variant{Attrs: p.attributes()}
			v.Name = p.word()
			switch {
			case p.is("{"):
				v.Fields = p.fields()
			case p.is("("):
				v.Tuple, v.Fields = true, p.places()
			}
			if p.eat("=") {
				v.Value = p.expr()
			}
			it.Variants = append(it.Variants, v)
			if !p.eat(",") && !p.is("}") {
				p.fail("a variant")
			}
		}
	case p.isWord("impl") || p.isWord("unsafe") && p.wordAt(1, "impl"):
		p.eatWord("unsafe")
		p.next()
		it.Kind = ImplItem
		if p.is("<") {
			it.Generics = p.generics()
		}
		p.eatWord("const")
		p.half("!")
		it.Type = p.typ()
		if p.eatWord("for") {
			it.Trait, it.Type = it.Type, p.typ()
		}
		p.where()
		it.Items = p.members()
	case p.isWord("trait") || p.isWord("unsafe") && p.wordAt(1, "trait"):
		p.eatWord("unsafe")
		p.next()
		it.Kind, it.Name = TraitItem, p.word()
		it.Generics = p.generics()
		if p.eat(":") {
			p.bounds()
		}
		p.where()
		it.Items = p.members()
	case p.isWord("mod"):
		p.next()
		it.Kind, it.Name = ModItem, p.word()
		if !p.eat(";") {
			p.want("{")
			it.Inline = true
			p.inner()
			for !p.eat("}") {
				at := p.i
				if in := p.guarded(); in != nil {
					it.Items = append(it.Items, in)
				}
				if p.i == at || p.cur().kind == tEnd {
					p.fail("an item")
				}
			}
		}
	case p.isWord("use"):
		p.next()
		it.Kind = UseItem
		p.uses(nil, &it.Uses)
		p.want(";")
	case p.isWord("const") || p.isWord("static"):
		it.Static = p.next().text == "static"
		it.Kind = ConstItem
		p.eatWord("mut")
		p.eatWord("ref") // of lazy_static!
		it.Name = p.word()
		if p.eat(":") {
			it.Type = p.typ()
		}
		if p.eat("=") {
			it.Value = p.expr()
		}
		p.want(";")
	case p.isWord("type"):
		p.next()
		it.Kind, it.Name = TypeItem, p.word()
		it.Generics = p.generics()
		if p.eat(":") {
			p.bounds()
		}
		p.where()
		if p.eat("=") {
			it.Type = p.typ()
		}
		p.want(";")
	case p.isWord("extern") && p.wordAt(1, "crate"):
		p.i += 2
		it.Kind = UseItem
		u := Use{Path: []string{p.word()}}
		u.As = u.Path[0]
		if p.eatWord("as") {
			u.As = p.word()
		}
		it.Uses = []Use{u}
		p.want(";")
	case p.isWord("extern"):
		p.over()
		return nil
	case p.isWord("macro_rules") && p.signAt(1, "!"):
		p.i += 2
		it.Kind, it.Name = MacroItem, p.word()
		it.Rules = p.within(p.inBrackets()).rules()
		p.eat(";")
	case p.cur().kind == tWord && (p.signAt(1, "!") || p.signAt(1, "::")):
		it.Kind = MacroItem
		it.Value = p.macro(p.pathHere())
		it.Name = it.Value.Path[len(it.Value.Path)-1]
		p.eat(";")
		if it.Name == "lazy_static" || it.Name == "thread_local" { // constants that are worked out late
			q := p.within(it.Value.Raw)
			for q.cur().kind != tEnd {
				at := q.i
				if in := q.guarded(); in != nil {
					it.Items = append(it.Items, in)
				}
				if q.i == at {
					break
				}
			}
		}
	default:
		p.fail("an item")
	}
	return it
}

// isFn reports whether a function begins here.
func (p *parser) isFn() bool {
	for n := 0; n < 6; n++ {
		t := p.at(n)
		switch {
		case t.kind == tText:
		case t.kind != tWord:
			return false
		case t.text == "fn":
			return true
		case t.text != "const" && t.text != "async" && t.text != "unsafe" && t.text != "extern" && t.text != "default":
			return false
		}
	}
	return false
}

func (p *parser) fn() *Fn {
	f := &Fn{Off: p.cur().off}
	for !p.isWord("fn") {
		f.Async = f.Async || p.isWord("async")
		p.next()
	}
	p.next()
	f.Name = p.word()
	f.Generics = p.generics()
	p.want("(")
	for first := true; !p.eat(")"); first = false {
		p.attributes()
		if first && p.self(f) {
			if p.eat(":") {
				p.typ()
			}
		} else {
			f.Params = append(f.Params, Param{Pat: p.pattern()})
			if p.eat(":") {
				f.Params[len(f.Params)-1].Type = p.typ()
			}
		}
		if !p.eat(",") && !p.is(")") {
			p.fail("a parameter")
		}
	}
	if p.eat("->") {
		f.Ret = p.typ()
	}
	f.Generics = append(f.Generics, p.where()...)
	if p.eat(";") {
		return f
	}
	at, depth := p.i, p.depth
	func() {
		defer func() {
			switch r := recover().(type) {
			case nil:
			case fault:
				p.i, p.depth, p.bare, p.split = at, depth, false, 0
				p.skip()
				f.Body, f.Broken = nil, r.why
			default:
				panic(r)
			}
		}()
		f.Body = p.block()
	}()
	return f
}

// self reads the object among the parameters: self, &self, &mut self, &'a mut self.
func (p *parser) self(f *Fn) bool {
	n := 0
	if p.signAt(n, "&") {
		n++
	}
	if p.at(n).kind == tLifetime {
		n++
	}
	mut := p.wordAt(n, "mut")
	if mut {
		n++
	}
	if !p.wordAt(n, "self") || p.signAt(n+1, "::") {
		return false
	}
	f.Self, f.Mut = true, mut
	p.i += n + 1
	return true
}

func (p *parser) generics() (list []Generic) {
	if !p.is("<") {
		return nil
	}
	p.next()
	for !p.half(">") {
		p.attributes()
		switch {
		case p.cur().kind == tLifetime:
			p.next()
			if p.eat(":") {
				p.bounds()
			}
		case p.eatWord("const"):
			p.word()
			p.want(":")
			p.typ()
			if p.eat("=") {
				p.operand()
			}
		default:
			g := Generic{Name: p.word()}
			if p.eat(":") {
				g.Bounds = p.bounds()
			}
			if p.eat("=") {
				p.typ()
			}
			list = append(list, g)
		}
		if !p.eat(",") && !(p.cur().kind == tPunct && strings.HasPrefix(p.cur().text, ">")) {
			p.fail("what it is made for")
		}
	}
	return list
}

// where reads what types are bound to.
func (p *parser) where() (list []Generic) {
	if !p.eatWord("where") {
		return nil
	}
	for !p.is("{") && !p.is(";") && !p.is("=") {
		if p.cur().kind == tLifetime {
			p.next()
			p.want(":")
			p.bounds()
		} else {
			p.higher()
			t := p.typ()
			p.want(":")
			list = append(list, Generic{Name: t.Last(), Bounds: p.bounds()})
		}
		if !p.eat(",") {
			break
		}
	}
	return list
}

// higher steps over for<'a>.
func (p *parser) higher() {
	if p.isWord("for") && p.signAt(1, "<") {
		p.next()
		p.generics()
	}
}

func (p *parser) bounds() (list []*Type) {
	for {
		switch {
		case p.cur().kind == tLifetime:
			p.next()
		case p.is("(") || p.is("?") || p.cur().kind == tWord && !p.isWord("where") || p.is("::") || p.is("<"):
			round := p.eat("(")
			p.eat("?")
			p.higher()
			list = append(list, p.typ())
			if round {
				p.want(")")
			}
		default:
			return list
		}
		if !p.eat("+") {
			return list
		}
	}
}

func (p *parser) fields() (list []Field) {
	p.want("{")
	for !p.eat("}") {
		f := Field{Attrs: p.attributes(), Off: p.cur().off}
		p.visible()
		f.Off = p.cur().off
		f.Name = p.word()
		p.want(":")
		f.Type = p.typ()
		list = append(list, f)
		if !p.eat(",") && !p.is("}") {
			p.fail("a field")
		}
	}
	return list
}

func (p *parser) visible() {
	if p.eatWord("pub") && p.is("(") && (p.wordAt(1, "crate") || p.wordAt(1, "super") || p.wordAt(1, "self") || p.wordAt(1, "in")) {
		p.skip()
	}
}

// places are fields without names.
func (p *parser) places() (list []Field) {
	p.want("(")
	for !p.eat(")") {
		f := Field{Attrs: p.attributes(), Off: p.cur().off}
		p.visible()
		f.Type = p.typ()
		list = append(list, f)
		if !p.eat(",") && !p.is(")") {
			p.fail("a field")
		}
	}
	return list
}

func (p *parser) members() (list []*Item) {
	p.want("{")
	p.inner()
	for !p.eat("}") {
		at := p.i
		if p.isWord("default") && !p.signAt(1, "!") {
			p.next()
		}
		if it := p.guarded(); it != nil {
			list = append(list, it)
		}
		if p.i == at || p.cur().kind == tEnd {
			p.fail("a member")
		}
	}
	return list
}

// uses reads a use declaration.
func (p *parser) uses(before []string, to *[]Use) {
	p.down()
	defer p.up()
	p.eat("::")
	path := slices.Clone(before)
	for {
		switch {
		case p.eat("*"):
			*to = append(*to, Use{Path: path, All: true})
			return
		case p.eat("{"):
			for !p.eat("}") {
				p.uses(path, to)
				if !p.eat(",") && !p.is("}") {
					p.fail("a use")
				}
			}
			return
		}
		path = append(path, p.word())
		if !p.eat("::") {
			break
		}
	}
	u := Use{Path: path, As: path[len(path)-1]}
	if u.As == "self" && len(path) > 1 {
		u.Path = path[:len(path)-1]
		u.As = u.Path[len(u.Path)-1]
	}
	if p.eatWord("as") {
		u.As = p.word()
	}
	*to = append(*to, u)
}

// rules reads those of macro_rules!.
func (p *parser) rules() (list []Rule) {
	for p.is("(") || p.is("[") || p.is("{") {
		r := Rule{Takes: p.inBrackets()}
		if !p.eat("=>") || !p.is("(") && !p.is("[") && !p.is("{") {
			return list
		}
		r.Makes = p.inBrackets()
		list = append(list, r)
		p.eat(";")
	}
	return list
}

// typ reads a type.
func (p *parser) typ() *Type {
	p.down()
	defer p.up()
	switch {
	case p.half("&"):
		if p.cur().kind == tLifetime {
			p.next()
		}
		t := &Type{Kind: RefType, Mut: p.eatWord("mut")}
		t.Args = []*Type{p.typ()}
		return t
	case p.is("*") && (p.wordAt(1, "const") || p.wordAt(1, "mut")):
		p.i += 2
		return &Type{Kind: RefType, Args: []*Type{p.typ()}}
	case p.eat("("):
		t := &Type{Kind: TupleType}
		for !p.eat(")") {
			t.Args = append(t.Args, p.typ())
			if !p.eat(",") {
				p.want(")")
				if len(t.Args) == 1 {
					return t.Args[0]
				}
				return t
			}
		}
		return t
	case p.eat("["):
		t := &Type{Kind: ArrayType, Args: []*Type{p.typ()}}
		if p.eat(";") {
			t.Size = p.expr()
		}
		p.want("]")
		return t
	case p.eat("!"):
		return &Type{Kind: NeverType}
	case p.isWord("_"):
		p.next()
		return &Type{Kind: InferType}
	case p.isWord("impl") || p.isWord("dyn"):
		p.next()
		t := &Type{Kind: BoundType, Args: p.bounds()}
		return t
	case p.isWord("for") && p.signAt(1, "<"):
		p.higher()
		return p.typ()
	case p.isWord("fn") || p.isWord("unsafe") || p.isWord("extern"):
		for !p.isWord("fn") {
			if p.cur().kind != tWord && p.cur().kind != tText {
				p.fail("a type")
			}
			p.next()
		}
		p.next()
		p.skip()
		t := &Type{Kind: FnType}
		if p.eat("->") {
			t.Args = []*Type{p.typ()}
		}
		return t
	case p.is("<"):
		t := &Type{}
		t.Self, t.Path = p.qualified()
		return t
	}
	t := &Type{}
	p.eat("::")
	for {
		t.Path = append(t.Path, p.word())
		if p.is("::") && p.signAt(1, "<") {
			p.next()
		}
		switch {
		case p.is("<") || p.is("<<"):
			t.Args = p.angled()
		case p.is("(") && (t.Last() == "Fn" || t.Last() == "FnMut" || t.Last() == "FnOnce"):
			p.skip()
			t.Kind = FnType
			if p.eat("->") {
				t.Args = []*Type{p.typ()}
			}
			return t
		case p.eat("!"):
			p.skip()
		}
		if !p.eat("::") {
			return t
		}
	}
}

// angled are types in angle brackets.
func (p *parser) angled() (list []*Type) {
	if !p.half("<") {
		p.fail("a type")
	}
	for !p.half(">") {
		switch {
		case p.cur().kind == tLifetime:
			p.next()
		case p.cur().kind == tNumber || p.cur().kind == tText || p.cur().kind == tChar || p.is("-"):
			p.operand()
			list = append(list, &Type{Kind: InferType})
		case p.is("{"):
			p.skip()
			list = append(list, &Type{Kind: InferType})
		case p.cur().kind == tWord && p.signAt(1, "="): // of a trait
			p.i += 2
			list = append(list, p.typ())
		default:
			t := p.typ()
			if p.eat(":") {
				p.bounds()
			}
			list = append(list, t)
		}
		if !p.eat(",") && !(p.cur().kind == tPunct && strings.HasPrefix(p.cur().text, ">")) {
			p.fail("a type")
		}
	}
	return list
}

// qualified reads a path that begins with a type in angle brackets: <T as Trait>::Name
// (the Rust Reference, "Qualified paths").
func (p *parser) qualified() (head *Type, names []string) {
	p.next()
	head = p.typ()
	if p.eatWord("as") {
		p.typ()
	}
	if !p.half(">") {
		p.fail("a type")
	}
	for p.eat("::") {
		names = append(names, p.word())
	}
	return head, names
}
