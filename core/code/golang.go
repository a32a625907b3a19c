package code

import (
	"bytes"
	"go/ast"
	"go/parser"
	"go/token"
	"strconv"
	"strings"
)

// readGo turns what go/parser reads into the nodes that every language has.
// A file with mistakes gives what could be read of it.
func readGo(src []byte) *Node {
	fset := token.NewFileSet()
	mode := parser.SkipObjectResolution
	if bytes.Contains(src, []byte("//go:embed ")) {
		mode |= parser.ParseComments
	}
	file, _ := parser.ParseFile(fset, "", src, mode)
	body := &Node{Kind: Block, End: int32(len(src))}
	if file == nil {
		return body
	}
	g := &goReader{base: file.FileStart}
	for _, d := range file.Decls {
		body.Kids = append(body.Kids, g.decl(d)...)
	}
	body.Kids = append(body.Kids, g.unnamed...)
	return body
}

type goReader struct {
	base    token.Pos
	unnamed []*Node    // the structures that are declared where they are used
	results [][]string // the names of the results of the functions around
	iota    int        // of the constant at hand
}

// named gives a structure without a name of its own one that no other has.
func (g *goReader) named(t *ast.StructType) string {
	name := "struct " + strconv.Itoa(int(t.Pos()-g.base))
	g.unnamed = append(g.unnamed, g.at(Class, name, t, &Node{Kind: Array}, g.fields(t)))
	return name
}

func (g *goReader) at(k Kind, name string, n ast.Node, kids ...*Node) *Node {
	return &Node{Kind: k, Name: name, Kids: kids, Off: int32(n.Pos() - g.base), End: int32(n.End() - g.base)}
}

func (n *Node) as(alias string) *Node {
	n.Alias = alias
	return n
}

func (g *goReader) decl(d ast.Decl) []*Node {
	switch d := d.(type) {
	case *ast.FuncDecl:
		f := g.function(d.Type, d.Body, d)
		f.Name = d.Name.Name
		if d.Recv != nil {
			f.Flag |= Method
			for _, r := range d.Recv.List {
				t, pointer := r.Type, uint16(0)
				if p, ok := t.(*ast.StarExpr); ok {
					t, pointer = p.X, Address
				}
				if id, ok := t.(*ast.Ident); ok {
					f.Alias = id.Name // the type
				}
				for _, name := range r.Names {
					p := g.at(Param, name.Name, name, nil, nil)
					p.Flag |= Star | pointer // the object itself, after the others
					f.Kids[0].Kids = append(f.Kids[0].Kids, p)
				}
			}
		}
		return []*Node{f}
	case *ast.GenDecl:
		return g.gen(d)
	}
	return nil
}

func (g *goReader) gen(d *ast.GenDecl) []*Node {
	var list []*Node
	var last []ast.Expr // what constants without a value of their own repeat
	for i, s := range d.Specs {
		switch s := s.(type) {
		case *ast.ImportSpec:
			path, err := strconv.Unquote(s.Path.Value)
			if err != nil {
				continue
			}
			n := g.at(Import, path, s.Path)
			alias := PackageName(path)
			if s.Name != nil {
				alias = s.Name.Name
			}
			n.Kids = []*Node{{Kind: ImportName, Name: "*", Alias: alias, Off: n.Off, End: n.End}}
			list = append(list, n)
		case *ast.ValueSpec:
			values := s.Values
			if d.Tok == token.CONST {
				if len(values) == 0 {
					values = last
				}
				last, g.iota = values, i
			}
			for i, name := range s.Names {
				b := g.at(Bind, d.Tok.String(), s, g.expr(name), nil)
				if i < len(values) {
					b.Kids[1] = g.expr(values[i])
				} else if file := Embedded(d.Doc, s.Doc); file != "" && len(s.Names) == 1 {
					b.Kids[1] = g.at(Call, "", s, g.at(Name, EmbeddedFile, s), g.at(String, file, s))
				} else if d.Tok == token.VAR {
					b.Kids[1] = g.zero(s.Type)
				}
				list = append(list, b)
			}
		case *ast.TypeSpec:
			if t, ok := s.Type.(*ast.StructType); ok {
				list = append(list, g.at(Class, s.Name.Name, s, &Node{Kind: Array}, g.fields(t)))
			}
			if t, ok := s.Type.(*ast.Ident); ok && basic[t.Name] { // what turns a value into one of the type
				f := g.at(Func, s.Name.Name, s)
				x := g.at(Name, "x", s)
				f.Kids = []*Node{g.at(Params, "", s, g.at(Param, "x", s, nil, nil)), g.at(Block, "", s, g.at(Return, "", s, g.at(Call, "", s, g.at(Name, t.Name, t), x)))}
				list = append(list, f)
			}
		}
	}
	return list
}

// basic are types of the language that a type of the program may be another name
// of.
var basic = map[string]bool{"string": true, "int": true, "uint16": true, "int64": true, "uint": true, "uint64": true, "int32": true}

// EmbeddedFile is the name of the call that stands for the content of a file
// that go build puts into the program.
const EmbeddedFile = "\x00embed"

// Embedded is the one file that a comment has go build put into a variable.
func Embedded(docs ...*ast.CommentGroup) string {
	for _, d := range docs {
		if d == nil {
			continue
		}
		for _, c := range d.List {
			if file, ok := strings.CutPrefix(c.Text, "//go:embed "); ok {
				if file = strings.Trim(strings.TrimSpace(file), `"`); !strings.ContainsAny(file, "*? ") {
					return file
				}
			}
		}
	}
	return ""
}

// fields reads the fields of a struct: Alias is the name of the type, the third
// kid the tag.
func (g *goReader) fields(t *ast.StructType) *Node {
	b := g.at(Block, "", t)
	for _, f := range t.Fields.List {
		typ, pointer := f.Type, uint16(0)
		if star, ok := typ.(*ast.StarExpr); ok {
			typ, pointer = star.X, Address
		}
		var tag *Node
		if f.Tag != nil {
			tag = g.expr(f.Tag)
		}
		names := f.Names
		if len(names) == 0 {
			switch t := typ.(type) { // embedded
			case *ast.Ident:
				names = []*ast.Ident{t}
			case *ast.SelectorExpr:
				names = []*ast.Ident{t.Sel}
			}
		}
		for _, name := range names {
			n := g.at(Bind, "let", f, g.at(Name, name.Name, name), nil)
			n.Alias, n.Flag = g.expr(typ).Dotted(), pointer
			if st, ok := typ.(*ast.StructType); ok { // without a name of its own
				n.Kids[1] = nil
				n.Kids = append(n.Kids, tag, g.fields(st))
			} else if tag != nil {
				n.Kids = append(n.Kids, tag)
			}
			b.Kids = append(b.Kids, n)
		}
	}
	return b
}

// PackageName is the name that a package most likely has: the last part of its
// path, without a major version.
func PackageName(p string) string {
	parts := strings.Split(p, "/")
	last := parts[len(parts)-1]
	if len(parts) > 1 && len(last) > 1 && last[0] == 'v' && strings.Trim(last[1:], "0123456789") == "" {
		last = parts[len(parts)-2]
	}
	if i := strings.LastIndex(last, ".v"); i > 0 {
		last = last[:i]
	}
	last = strings.TrimPrefix(last, "go-")
	return strings.TrimSuffix(last, "-go")
}

func (g *goReader) function(t *ast.FuncType, body *ast.BlockStmt, at ast.Node) *Node {
	f := g.at(Func, "", at)
	ps := &Node{Kind: Params, Off: f.Off, End: f.Off}
	if t.Params != nil {
		for _, field := range t.Params.List {
			for _, name := range field.Names {
				p := g.at(Param, name.Name, name, nil, nil)
				if _, ok := field.Type.(*ast.Ellipsis); ok {
					p.Flag |= Rest
				}
				ps.Kids = append(ps.Kids, p)
			}
		}
	}
	f.Kids = []*Node{ps, &Node{Kind: Block}}
	if body == nil {
		return f
	}
	var names []string
	var zeros []*Node
	if t.Results != nil {
		for _, field := range t.Results.List {
			for _, name := range field.Names {
				names = append(names, name.Name)
				if name.Name != "_" {
					zeros = append(zeros, g.at(Bind, "var", field, g.expr(name), g.zero(field.Type)))
				}
			}
		}
	}
	g.results = append(g.results, names)
	f.Kids[1] = g.block(body)
	g.results = g.results[:len(g.results)-1]
	f.Kids[1].Kids = append(zeros, f.Kids[1].Kids...)
	return f
}

func (g *goReader) block(b *ast.BlockStmt) *Node {
	n := g.at(Block, "", b)
	for _, s := range b.List {
		n.Kids = append(n.Kids, g.stmt(s)...)
	}
	return n
}

func one(n *Node) []*Node {
	if n == nil {
		return nil
	}
	return []*Node{n}
}

func (g *goReader) stmt(s ast.Stmt) []*Node {
	switch s := s.(type) {
	case *ast.ExprStmt:
		if set := g.flagVar(s); set != nil {
			return one(set)
		}
		return one(g.at(ExprStmt, "", s, g.expr(s.X)))
	case *ast.DeclStmt:
		return g.decl(s.Decl)
	case *ast.AssignStmt:
		var list []*Node
		for i, l := range s.Lhs {
			value := g.expr(s.Rhs[min(i, len(s.Rhs)-1)])
			if len(s.Lhs) > 1 && len(s.Rhs) == 1 && i > 0 {
				// The second of what a call gives: ok, err.
				value = g.at(Call, "", s, g.at(Name, SecondResult, s), value)
			}
			if s.Tok == token.DEFINE {
				list = append(list, g.at(Bind, "var", s, g.expr(l), value))
			} else {
				list = append(list, g.at(ExprStmt, "", s, g.at(Assign, s.Tok.String(), s, g.expr(l), value)))
			}
		}
		return list
	case *ast.IncDecStmt:
		return one(g.at(ExprStmt, "", s, g.at(Unary, s.Tok.String(), s, g.expr(s.X))))
	case *ast.BranchStmt:
		n := g.at(Jump, s.Tok.String(), s)
		if s.Label != nil {
			n.Alias = s.Label.Name
		}
		return one(n)
	case *ast.IfStmt:
		var list []*Node
		if s.Init != nil {
			list = first(g.stmt(s.Init))
		}
		n := g.at(If, "", s, g.expr(s.Cond), g.block(s.Body), nil)
		if s.Else != nil {
			e := &Node{Kind: Block, Kids: g.stmt(s.Else)}
			n.Kids[2] = e
		}
		return append(list, n)
	case *ast.BlockStmt:
		return one(g.block(s))
	case *ast.ForStmt:
		var list []*Node
		if s.Init != nil {
			list = first(g.stmt(s.Init))
		}
		n := g.at(Loop, "for", s)
		none := &Node{Kind: Block, Off: n.Off, End: n.Off}
		n.Kids = []*Node{none, none, none}
		if s.Cond != nil {
			n.Kids[1] = g.expr(s.Cond)
		}
		if s.Post != nil {
			if post := g.stmt(s.Post); len(post) == 1 {
				n.Kids[2] = post[0]
			}
		}
		n.Kids = append(n.Kids, g.block(s.Body))
		return append(list, n)
	case *ast.RangeStmt:
		var target *Node
		for _, x := range []ast.Expr{s.Value, s.Key} {
			if id, ok := x.(*ast.Ident); ok && id.Name != "_" && target == nil {
				target = g.expr(x)
			}
		}
		if target == nil {
			return one(g.at(Loop, Times, s, g.expr(s.X), g.block(s.Body)))
		}
		loop := g.at(Loop, "of", s, target, g.expr(s.X), g.block(s.Body))
		if key, ok := s.Key.(*ast.Ident); ok && key.Name == target.Name {
			loop.Name = "in" // the key alone
		} else if ok && key.Name != "_" {
			loop.Alias = key.Name
		}
		return one(loop)
	case *ast.ReturnStmt:
		n := g.at(Return, "", s)
		for _, r := range s.Results {
			n.Kids = append(n.Kids, g.expr(r))
		}
		if len(s.Results) == 0 && len(g.results) > 0 {
			for _, name := range g.results[len(g.results)-1] {
				n.Kids = append(n.Kids, g.at(Name, name, s))
			}
		}
		return one(n)
	case *ast.SendStmt:
		return one(g.at(ExprStmt, "", s, g.expr(s.Value)))
	case *ast.TypeSwitchStmt:
		return one(named(Beside, g.block(s.Body)))
	case *ast.GoStmt:
		return one(g.at(ExprStmt, Beside, s, g.expr(s.Call)))
	case *ast.DeferStmt:
		return one(g.at(ExprStmt, Deferred, s, g.expr(s.Call)))
	case *ast.SwitchStmt:
		n := g.at(Switch, "", s, nil)
		if s.Tag != nil {
			n.Kids[0] = g.expr(s.Tag)
		}
		for _, c := range s.Body.List {
			if cc, ok := c.(*ast.CaseClause); ok {
				b := &Node{Kind: Block}
				for _, x := range cc.Body {
					b.Kids = append(b.Kids, g.stmt(x)...)
				}
				k := g.at(Case, "", cc, b)
				for _, x := range cc.List {
					k.Kids = append(k.Kids, g.expr(x))
				}
				n.Kids = append(n.Kids, k)
			}
		}
		if s.Init != nil {
			return append(first(g.stmt(s.Init)), n)
		}
		return one(n)
	case *ast.SelectStmt:
		return one(named(Waits, g.block(s.Body)))
	case *ast.CommClause:
		var list []*Node
		for _, x := range s.Body {
			list = append(list, g.stmt(x)...)
		}
		return list
	case *ast.LabeledStmt:
		list := g.stmt(s.Stmt)
		if len(list) > 0 && list[len(list)-1].Is(Loop) {
			loop := list[len(list)-1]
			list[len(list)-1] = &Node{Kind: Block, Alias: s.Label.Name, Kids: []*Node{loop}, Off: loop.Off, End: loop.End}
		}
		return list
	}
	return nil
}

// Names of statements of Go: what goes on beside the others, what is put off to
// the end of a function, what waits, a loop that only counts, what stands before
// the test of an if, a for or a switch and belongs to it.
const (
	Beside   = "\x00go"
	Deferred = "\x00defer"
	Waits    = "\x00select"
	Times    = "\x00times"
	Head     = "\x00head"
)

// first marks what stands before a test.
func first(list []*Node) []*Node {
	for _, n := range list {
		n.Alias = Head
	}
	return list
}

// SecondResult is the name of the call that stands for the second result of
// another: whether it is there, or what went wrong.
const SecondResult = "\x00second"

// zero is the value of a variable that is only declared: an empty object for
// types that are named elsewhere, empty text, 0.
func (g *goReader) zero(t ast.Expr) *Node {
	switch t := t.(type) {
	case *ast.StructType:
		return g.at(Object, "", t).as(g.named(t))
	case *ast.SelectorExpr:
		return &Node{Kind: Object, Alias: g.expr(t).Dotted(), Off: int32(t.Pos() - g.base), End: int32(t.End() - g.base)}
	case *ast.Ident:
		switch t.Name {
		case "string":
			return g.at(String, "", t)
		case "int", "uint", "int64", "uint16", "int32":
			return g.at(Number, "0", t)
		case "bool":
			return g.at(False, "", t)
		case "error", "any":
			return g.at(Null, "", t)
		}
		return &Node{Kind: Object, Alias: t.Name, Off: int32(t.Pos() - g.base), End: int32(t.End() - g.base)}
	case *ast.ArrayType, *ast.MapType, *ast.StarExpr, *ast.InterfaceType, *ast.ChanType, *ast.FuncType:
		return nil
	}
	return nil
}

// flagVar reads flag.StringVar(&x, name, default, usage) as x being set to what
// flag.String gives.
func (g *goReader) flagVar(s *ast.ExprStmt) *Node {
	call, ok := s.X.(*ast.CallExpr)
	if !ok || len(call.Args) < 3 {
		return nil
	}
	fn, ok := call.Fun.(*ast.SelectorExpr)
	name := ""
	if ok {
		name = strings.TrimSuffix(fn.Sel.Name, "P")
	}
	if !ok || !strings.HasSuffix(name, "Var") {
		return nil
	}
	if pkg, ok := fn.X.(*ast.Ident); ok && pkg.Name != "flag" && pkg.Name != "pflag" && (len(call.Args) < 4 || name == "Var") {
		return nil // a set of flags is given a name, a default and what to say of it
	} else if call, isCall := fn.X.(*ast.CallExpr); !ok && isCall { // cmd.Flags().StringVar
		if of, ok := call.Fun.(*ast.SelectorExpr); !ok || !strings.HasSuffix(of.Sel.Name, "Flags") {
			return nil
		}
	} else if !ok {
		return nil
	}
	to, ok := call.Args[0].(*ast.UnaryExpr)
	if !ok || to.Op != token.AND {
		return nil
	}
	n := g.at(Call, "", call, g.at(Member, strings.Replace(fn.Sel.Name, "Var", "", 1), fn, g.expr(fn.X)))
	for _, a := range call.Args[1:] {
		n.Kids = append(n.Kids, g.expr(a))
	}
	return g.at(ExprStmt, "", s, g.at(Assign, "=", s, g.expr(to.X), n))
}

// Asserted is the name of a value that is said to be of a type.
const Asserted = "\x00asserted"

// Asserting names the function that an assert of Python calls with what must hold.
const Asserting = "\x00assert"

// element is the name of the type of what a map holds; "any" where it has none
// of one word.
func element(t ast.Expr) string {
	switch t := t.(type) {
	case *ast.Ident:
		return t.Name
	case *ast.ArrayType:
		return "[]"
	}
	return "any"
}

func isZero(e ast.Expr) bool {
	lit, ok := e.(*ast.BasicLit)
	return ok && lit.Value == "0"
}

// elided gives elements that are written without their type the one of the list
// or the map (The Go Programming Language Specification, "Composite literals").
func elided(list []ast.Expr, t ast.Expr) {
	if p, ok := t.(*ast.StarExpr); ok {
		t = p.X
	}
	for _, x := range list {
		if kv, ok := x.(*ast.KeyValueExpr); ok {
			x = kv.Value
		}
		if lit, ok := x.(*ast.CompositeLit); ok && lit.Type == nil {
			lit.Type = t
		}
	}
}

func (g *goReader) expr(e ast.Expr) *Node {
	switch e := e.(type) {
	case nil:
		return nil
	case *ast.Ident:
		switch e.Name {
		case "true":
			return g.at(True, "", e)
		case "false":
			return g.at(False, "", e)
		case "nil":
			return g.at(Null, "", e)
		case "iota":
			return g.at(Number, strconv.Itoa(g.iota), e)
		}
		return g.at(Name, e.Name, e)
	case *ast.BasicLit:
		switch e.Kind {
		case token.STRING, token.CHAR:
			s, _ := strconv.Unquote(e.Value)
			return g.at(String, s, e)
		}
		return g.at(Number, e.Value, e)
	case *ast.SelectorExpr:
		return g.at(Member, e.Sel.Name, e, g.expr(e.X))
	case *ast.IndexExpr:
		return g.at(Index, "", e, g.expr(e.X), g.expr(e.Index))
	case *ast.CallExpr:
		if _, ok := e.Fun.(*ast.ArrayType); ok && len(e.Args) == 1 { // []byte(x)
			return g.expr(e.Args[0])
		}
		if id, ok := e.Fun.(*ast.Ident); ok && id.Name == "make" && len(e.Args) > 0 {
			switch t := e.Args[0].(type) {
			case *ast.MapType:
				return g.at(Object, element(t.Value), e)
			case *ast.ArrayType:
				if len(e.Args) == 1 || isZero(e.Args[1]) {
					return g.at(Array, "", e)
				}
			}
		}
		if id, ok := e.Fun.(*ast.Ident); ok && id.Name == "new" && len(e.Args) == 1 {
			if n := g.zero(e.Args[0]); n.Is(Object) {
				n.Flag |= Address
				return n
			}
		}
		n := g.at(Call, "", e, g.expr(e.Fun))
		for _, a := range e.Args {
			n.Kids = append(n.Kids, g.expr(a))
		}
		if e.Ellipsis.IsValid() && len(n.Kids) > 1 {
			last := n.Kids[len(n.Kids)-1]
			n.Kids[len(n.Kids)-1] = &Node{Kind: Spread, Off: last.Off, End: last.End, Kids: []*Node{last}}
		}
		return n
	case *ast.TypeAssertExpr:
		return g.at(Unknown, Asserted, e, g.expr(e.X))
	case *ast.SliceExpr:
		if e.High != nil && e.Max == nil {
			part := g.at(Unknown, Slice, e, g.expr(e.Low), g.expr(e.High))
			if e.Low == nil {
				part.Kids[0] = &Node{Kind: Undefined, Off: part.Off, End: part.Off}
			}
			return g.at(Index, "", e, g.expr(e.X), part)
		}
		if e.High == nil && e.Low != nil {
			rest := g.at(Unknown, Rest1, e.Low, g.expr(e.Low))
			return g.at(Index, "", e, g.expr(e.X), rest)
		}
	case *ast.BinaryExpr:
		return g.at(Binary, e.Op.String(), e, g.expr(e.X), g.expr(e.Y))
	case *ast.UnaryExpr:
		if e.Op == token.AND {
			n := g.expr(e.X)
			if n != nil {
				n.Flag |= Address
			}
			return n
		}
		return g.at(Unary, e.Op.String(), e, g.expr(e.X))
	case *ast.StarExpr:
		return g.expr(e.X)
	case *ast.ParenExpr:
		return g.expr(e.X)
	case *ast.FuncLit:
		return g.function(e.Type, e.Body, e)
	case *ast.CompositeLit:
		n := g.at(Object, "", e)
		switch t := e.Type.(type) {
		case *ast.ArrayType:
			n.Kind = Array
			elided(e.Elts, t.Elt)
		case *ast.MapType:
			n.Name = element(t.Value)
			elided(e.Elts, t.Value)
		case *ast.Ident, *ast.SelectorExpr:
			n.Alias = g.expr(e.Type).Dotted()
		case *ast.StructType:
			n.Alias = g.named(e.Type.(*ast.StructType))
		}
		for _, x := range e.Elts {
			if kv, ok := x.(*ast.KeyValueExpr); ok {
				p := g.at(Pair, "", kv, g.expr(kv.Value))
				if id, ok := kv.Key.(*ast.Ident); ok && n.Name == "" {
					p.Name = id.Name
				} else {
					p.Kids = append(p.Kids, g.expr(kv.Key))
				}
				n.Kids = append(n.Kids, p)
			} else {
				n.Kind = Array
				n.Kids = append(n.Kids, g.expr(x))
			}
		}
		return n
	}
	return g.at(Unknown, "", e)
}
