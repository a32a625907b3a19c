package trace

import (
	"go/ast"
	"go/build/constraint"
	goparser "go/parser"
	"go/token"
	"math"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// Programs of Go are gone through on their syntax trees, with values that know
// their types (The Go Programming Language Specification, version of Go 1.26).

// goKind is the kind of a type.
type goKind uint8

const (
	goNone goKind = iota
	goBool
	goInt
	goFloat
	goString
	goPointer
	goSlice
	goArray
	goMap
	goFunc
	goStruct
	goInterface
	goChan
	goOutside // a type from outside of the tree that is not followed
	goParam   // a parameter of a type that is not known here
	goUntyped // a constant, until it is used
)

// goType is a type.
type goType struct {
	kind     goKind
	name     string // of a type that has one
	pkg      *goPackage
	bits     int
	unsigned bool
	elem     *goType
	key      *goType
	fields   []goField
	methods  []string // of an interface
	embeds   []*goType
	size     int     // of an array
	of       *goType // what a type with a name is made of
	params   []*goType
	results  []*goType
	generic  string // the name without what it is made with
}

type goField struct {
	name     string
	t        *goType
	embedded bool
	tag      string
}

// goCell is a variable, and a pointer to it.
type goCell struct {
	v    goValue
	t    *goType // what it was declared as; nil: what it holds
	lazy func() error
}

// goValue is a value with the type that it has while the program runs.
type goValue struct {
	v any
	t *goType
}

// Values besides bool, integer, float64, string, nil, *goCell, *opaque, *object and
// *content.
type (
	goRecord struct{ fields []*goCell }
	goList   struct{ a []*goCell } // a slice
	goRow    struct{ a []*goCell } // an array
	goTable  struct {
		keys []any
		m    map[any]*goEntry
	}
	goEntry struct {
		k goValue
		c *goCell
	}
	goClosure struct {
		name   string
		decl   *ast.FuncType
		body   *ast.BlockStmt
		scope  *goScope
		recv   *goValue
		recvOf *ast.FieldList
		native func(m *machine, args []goValue, at spot) ([]goValue, error)
		node   ast.Node
		home   *goType // of a method of a generic type
	}
	goQueue struct {
		q      []goValue
		closed bool
	}
	goFault struct {
		msg    string
		causes []goValue
		path   string // of one from outside
		own    bool   // errors.New or fmt.Errorf made it
	}
	goTypeValue struct{ t *goType }
	goSequence  struct{ items [][]goValue }
)

// goPackage is a package of the tree.
type goPackage struct {
	dir     string
	name    string
	scope   *goScope
	types   map[string]*goType
	specs   map[string]*goSpec
	methods map[string]map[string]*goClosure // by the type
	inits   []*goClosure
}

type goSpec struct {
	spec *ast.TypeSpec
	file *goFile
}

// goFile is a file of it.
type goFile struct {
	f     *code.File
	ast   *ast.File
	base  int
	pkg   *goPackage
	scope *goScope // what it imports
	calls map[[2]int32]*code.Node
	funcs map[[2]int32]*code.Scope
}

// goScope is a stretch in which names are known.
type goScope struct {
	vars  map[string]*goCell
	types map[string]*goType
	up    *goScope
	file  *goFile
	frame *goFrame
}

// goFrame is a call of a function.
type goFrame struct {
	fn       *goClosure
	static   *code.Scope
	results  []*goCell
	named    bool
	deferred []func() error
	panicked *goPanic
	faulty   bool // it could not be followed while it made an error to give back
	iota     int
	types    []*goType // of the results
}

func (s *goScope) inner() *goScope {
	return &goScope{up: s, file: s.file, frame: s.frame}
}

func (s *goScope) find(name string) *goCell {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c
		}
	}
	return nil
}

func (s *goScope) declare(name string, v goValue, t *goType) *goCell {
	c := &goCell{v: v, t: t}
	if name != "_" {
		if s.vars == nil {
			s.vars = map[string]*goCell{}
		}
		s.vars[name] = c
	}
	return c
}

// Types of the language.
var (
	tBool    = &goType{kind: goBool, name: "bool"}
	tInt     = &goType{kind: goInt, name: "int", bits: 64}
	tFloat   = &goType{kind: goFloat, name: "float64", bits: 64}
	tString  = &goType{kind: goString, name: "string"}
	tAny     = &goType{kind: goInterface}
	tByte    = &goType{kind: goInt, name: "uint8", bits: 8, unsigned: true}
	tRune    = &goType{kind: goInt, name: "int32", bits: 32}
	tBytes   = &goType{kind: goSlice, elem: tByte}
	tStrings = &goType{kind: goSlice, elem: tString}
	tError   = &goType{kind: goInterface, name: "error", methods: []string{"Error"}}
	tFault   = &goType{kind: goPointer, name: "*errors.errorString"}
	tUntyped = &goType{kind: goUntyped}
	tLength  = &goType{kind: goInt, name: "time.Duration", bits: 64}
)

var goBasic = map[string]*goType{
	"bool": tBool, "string": tString, "int": tInt, "float64": tFloat, "byte": tByte, "uint8": tByte, "rune": tRune, "int32": tRune, "any": tAny, "error": tError,
	"int8": {kind: goInt, name: "int8", bits: 8}, "int16": {kind: goInt, name: "int16", bits: 16}, "int64": {kind: goInt, name: "int64", bits: 64},
	"uint": {kind: goInt, name: "uint", bits: 64, unsigned: true}, "uint16": {kind: goInt, name: "uint16", bits: 16, unsigned: true}, "uint32": {kind: goInt, name: "uint32", bits: 32, unsigned: true},
	"uint64": {kind: goInt, name: "uint64", bits: 64, unsigned: true}, "uintptr": {kind: goInt, name: "uintptr", bits: 64, unsigned: true}, "float32": {kind: goFloat, name: "float32", bits: 32},
	"comparable": tAny, "complex128": {kind: goOutside, name: "complex128"},
}

// under is what a type is made of.
func (t *goType) under() *goType {
	for i := 0; t != nil && t.of != nil && i < 50; i++ {
		t = t.of
	}
	return t
}

func (t *goType) is(k goKind) bool { return t != nil && t.under().kind == k }

// same reports whether two types are the same.
func (t *goType) same(u *goType) bool {
	if t == u {
		return true
	}
	if t == nil || u == nil || t.kind != u.kind || t.name != u.name || t.pkg != u.pkg {
		return false
	}
	if t.name != "" {
		return true
	}
	switch t.kind {
	case goPointer, goSlice, goChan:
		return t.elem.same(u.elem)
	case goArray:
		return t.size == u.size && t.elem.same(u.elem)
	case goMap:
		return t.key.same(u.key) && t.elem.same(u.elem)
	case goInterface:
		return len(t.methods) == len(u.methods)
	case goFunc:
		if len(t.params) != len(u.params) || len(t.results) != len(u.results) {
			return false
		}
		for i, p := range t.params {
			if !p.same(u.params[i]) {
				return false
			}
		}
		for i, p := range t.results {
			if !p.same(u.results[i]) {
				return false
			}
		}
		return true
	case goStruct:
		if len(t.fields) != len(u.fields) {
			return false
		}
		for i, f := range t.fields {
			if f.name != u.fields[i].name || !f.t.same(u.fields[i].t) {
				return false
			}
		}
		return true
	}
	return false
}

// String is the type as %T shows it.
func (t *goType) String() string {
	switch {
	case t == nil:
		return "<nil>"
	case t.name != "" && t.pkg != nil:
		return t.pkg.name + "." + t.name
	case t.name != "":
		return t.name
	}
	switch t.kind {
	case goPointer:
		return "*" + t.elem.String()
	case goSlice:
		return "[]" + t.elem.String()
	case goArray:
		return "[" + strconv.Itoa(t.size) + "]" + t.elem.String()
	case goMap:
		return "map[" + t.key.String() + "]" + t.elem.String()
	case goInterface:
		return "interface {}"
	}
	return "func()"
}

func pointerTo(t *goType) *goType { return &goType{kind: goPointer, elem: t} }

// goLoad loads a package: what it imports first, then its variables and its
// functions init.
func (m *machine) goLoad(dir string) (*goPackage, error) {
	if p := m.goPackages[dir]; p != nil {
		return p, nil
	}
	if m.depth++; m.depth > maxDepth*10 {
		return nil, giveUp("packages that import each other")
	}
	defer func() { m.depth-- }()
	p := &goPackage{dir: dir, types: map[string]*goType{}, specs: map[string]*goSpec{}, methods: map[string]map[string]*goClosure{}}
	m.goPackages[dir] = p
	p.scope = &goScope{vars: map[string]*goCell{}}
	var lazy []*goCell
	for _, name := range m.e.Loader.Beside(dir) {
		if !strings.HasSuffix(name, ".go") || strings.HasSuffix(name, "_test.go") {
			continue
		}
		f := m.e.Loader.File(name)
		if f == nil || f.Body == nil {
			return nil, giveUp("%s could not be read", name)
		}
		fset := token.NewFileSet()
		tree, err := goparser.ParseFile(fset, "", f.Src, goparser.ParseComments|goparser.SkipObjectResolution)
		if err != nil {
			return nil, giveUp("%s could not be read", name)
		}
		if !goBuilt(name, tree) {
			continue
		}
		g := &goFile{f: f, ast: tree, base: fset.File(tree.Pos()).Base(), pkg: p}
		p.name = tree.Name.Name
		mod := &module{file: f, exports: newObject()}
		mod.top = &scope{vars: map[string]*cell{}, module: mod, static: f.Top, this: undefined, own: true}
		m.modules[name] = mod
		g.scope = &goScope{vars: map[string]*goCell{}, up: p.scope, file: g, frame: &goFrame{static: f.Top}}
		if p.scope.file == nil {
			p.scope.file, p.scope.frame = g, g.scope.frame
		}
		if err := m.step(); err != nil {
			return nil, err
		}
		for _, d := range tree.Decls {
			cells, err := m.goTop(d, g)
			if err != nil {
				return nil, err
			}
			lazy = append(lazy, cells...)
		}
	}
	for _, c := range lazy { // each when it is first asked for, at last in the order of the source
		if err := m.goReady(c); err != nil {
			return nil, err
		}
	}
	for _, f := range p.inits {
		if _, err := m.goCall(f, nil, f.scope.file.spot(f.node)); err != nil {
			return nil, err
		}
	}
	return p, nil
}

func (m *machine) goReady(c *goCell) error {
	f := c.lazy
	if f == nil {
		return nil
	}
	c.lazy = nil
	return f()
}

// goBuilt reports whether a file is built for Linux (cmd/go, "Build constraints").
func goBuilt(name string, tree *ast.File) bool {
	words := strings.Split(strings.TrimSuffix(path.Base(name), ".go"), "_")
	for i, w := range words {
		if i > 0 && i >= len(words)-2 && goSystems[w] && w != "linux" && w != "amd64" {
			return false
		}
	}
	var lines []string
	for _, group := range tree.Comments {
		if group.Pos() >= tree.Package {
			break
		}
		for _, c := range group.List {
			lines = append(lines, c.Text)
		}
	}
	if slices.ContainsFunc(lines, constraint.IsGoBuild) { // it beats lines of the older form
		lines = slices.DeleteFunc(lines, func(l string) bool { return !constraint.IsGoBuild(l) })
	}
	for _, l := range lines {
		if !constraint.IsGoBuild(l) && !constraint.IsPlusBuild(l) {
			continue
		}
		x, err := constraint.Parse(l)
		if err == nil && !x.Eval(func(tag string) bool {
			return tag == "linux" || tag == "amd64" || tag == "unix" || tag == "gc" || strings.HasPrefix(tag, "go1.")
		}) {
			return false
		}
	}
	return true
}

// goSystems are the systems and processors that names of files end with.
var goSystems = map[string]bool{"aix": true, "android": true, "darwin": true, "dragonfly": true, "freebsd": true, "illumos": true, "ios": true, "js": true, "linux": true, "netbsd": true, "openbsd": true, "plan9": true, "solaris": true, "wasip1": true, "windows": true,
	"386": true, "amd64": true, "arm": true, "arm64": true, "loong64": true, "mips": true, "mips64": true, "ppc64": true, "ppc64le": true, "riscv64": true, "s390x": true, "wasm": true}

// goTop reads a declaration at the top of a file; it gives the variables that are
// still to be set.
func (m *machine) goTop(d ast.Decl, g *goFile) (lazy []*goCell, err error) {
	p := g.pkg
	switch d := d.(type) {
	case *ast.FuncDecl:
		f := &goClosure{name: d.Name.Name, decl: d.Type, body: d.Body, scope: g.scope, recvOf: d.Recv, node: d}
		switch {
		case d.Recv != nil && len(d.Recv.List) == 1:
			name := receiverName(d.Recv.List[0].Type)
			if p.methods[name] == nil {
				p.methods[name] = map[string]*goClosure{}
			}
			p.methods[name][d.Name.Name] = f
		case d.Name.Name == "init":
			p.inits = append(p.inits, f)
		default:
			p.scope.declare(d.Name.Name, goValue{f, nil}, nil)
		}
	case *ast.GenDecl:
		return m.goGeneral(d, g.scope, true)
	}
	return nil, nil
}

func receiverName(e ast.Expr) string {
	switch e := e.(type) {
	case *ast.StarExpr:
		return receiverName(e.X)
	case *ast.IndexExpr:
		return receiverName(e.X)
	case *ast.IndexListExpr:
		return receiverName(e.X)
	case *ast.ParenExpr:
		return receiverName(e.X)
	case *ast.Ident:
		return e.Name
	}
	return ""
}

// goGeneral runs var, const, type and import; those at the top of a file are put off
// until they are asked for.
func (m *machine) goGeneral(d *ast.GenDecl, s *goScope, top bool) (lazy []*goCell, err error) {
	g := s.file
	in := s
	if top {
		in = g.pkg.scope
	}
	var last *ast.ValueSpec
	for i, spec := range d.Specs {
		switch spec := spec.(type) {
		case *ast.ImportSpec:
			if err := m.goImport(spec, g); err != nil {
				return nil, err
			}
		case *ast.TypeSpec:
			if top {
				g.pkg.specs[spec.Name.Name] = &goSpec{spec, g}
				continue
			}
			if spec.Assign.IsValid() {
				t, err := m.goTypeOf(spec.Type, s)
				if err != nil {
					return nil, err
				}
				s.typed(spec.Name.Name, t)
				continue
			}
			t := &goType{name: spec.Name.Name, pkg: g.pkg}
			s.typed(spec.Name.Name, t)
			if err := m.goMade(t, spec.Type, s); err != nil {
				return nil, err
			}
		case *ast.ValueSpec:
			from := spec
			if d.Tok == token.CONST {
				if len(spec.Values) == 0 && last != nil {
					from = last
				} else {
					last = spec
				}
			}
			at := i
			run := func(cells []*goCell) error {
				frame := *s.frame
				frame.iota = at
				of := &goScope{up: s, file: g, frame: &frame}
				return m.goVariables(spec, from, cells, of, d)
			}
			cells := make([]*goCell, len(spec.Names))
			for j := range spec.Names {
				cells[j] = &goCell{}
			}
			if !top {
				if err := run(cells); err != nil {
					return nil, err
				}
			}
			done := false
			for j, name := range spec.Names {
				if top {
					cells[j].lazy = func() error {
						if done {
							return nil
						}
						done = true
						err := run(cells)
						if err == nil {
							return nil
						}
						err = placed(err, func() place.Span { return g.f.At(g.spot(spec).n) })
						if x := m.goAside(s, 1, &ast.DeclStmt{Decl: &ast.GenDecl{Tok: token.VAR, Specs: []ast.Spec{spec}}}); !opens(err) || x.fails || x.ends {
							return err
						}
						for _, c := range cells { // nothing else hangs on it
							if c.v.v == nil {
								c.v = goValue{dontKnow(err.Error()), c.t}
							}
						}
						return nil
					}
					lazy = append(lazy, cells[j])
				}
				if name.Name != "_" {
					if in.vars == nil {
						in.vars = map[string]*goCell{}
					}
					in.vars[name.Name] = cells[j]
				}
			}
		}
	}
	return lazy, nil
}

// goVariables gives variables their first values.
func (m *machine) goVariables(spec, from *ast.ValueSpec, cells []*goCell, s *goScope, d *ast.GenDecl) error {
	for _, c := range cells {
		c.lazy = nil
	}
	var t *goType
	if from.Type != nil {
		var err error
		if t, err = m.goTypeOf(from.Type, s); err != nil {
			return err
		}
	}
	if len(from.Values) == 0 {
		if t != nil && t.name == "embed.FS" && len(cells) == 1 {
			cells[0].v, cells[0].t = goValue{&opaque{path: "embed.FS", args: []any{source.Dir(s.file.f.Name)}}, nil}, t
			return nil
		}
		if file := code.Embedded(d.Doc, spec.Doc); file != "" && len(cells) == 1 {
			switch x := m.readFile(root + "/" + path.Join(source.Dir(s.file.f.Name), file)).(type) {
			case *content:
				cells[0].v, cells[0].t = goValue{x, t}, t
				return nil
			}
			cells[0].v, cells[0].t = goValue{dontKnow("a file that is built in"), nil}, t
			return nil
		}
		for _, c := range cells {
			v, err := m.goZero(t, s)
			if err != nil {
				return err
			}
			c.v, c.t = v, t
		}
		return nil
	}
	constant := d.Tok == token.CONST
	var values []goValue
	if len(from.Values) == 1 && len(cells) > 1 {
		list, err := m.goSeveral(from.Values[0], len(cells), s)
		if err != nil {
			return err
		}
		values = list
	} else {
		for _, e := range from.Values {
			v, err := m.goWant(e, t, s)
			if err != nil {
				return err
			}
			values = append(values, v)
		}
	}
	for i, c := range cells {
		if i >= len(values) {
			return giveUp("values that are missing")
		}
		v := values[i]
		if t != nil || !constant {
			var err error
			if v, err = m.goFit(v, t, s); err != nil {
				return err
			}
		}
		c.v, c.t = goCopy(v), t
		if t == nil && !constant {
			c.t = declaredAs(v)
		}
	}
	return nil
}

// declaredAs is the type of a variable that takes the type of its first value; nil
// where that is not known, or is one of an interface.
func declaredAs(v goValue) *goType {
	if v.t == nil || v.t.kind == goUntyped {
		return nil
	}
	switch v.t.under().kind {
	case goInt, goFloat, goString, goBool:
		return v.t
	}
	return nil
}

func (m *machine) goImport(spec *ast.ImportSpec, g *goFile) error {
	name, err := strconv.Unquote(spec.Path.Value)
	if err != nil {
		return nil
	}
	alias := ""
	if spec.Name != nil {
		alias = spec.Name.Name
	}
	to, ok := m.e.Loader.Resolve(g.f, name, "")
	if !ok {
		if alias == "" {
			alias = code.PackageName(name)
		}
		g.scope.declare(alias, goValue{m.package1(value.Library(name)), nil}, nil)
		return nil
	}
	p, err := m.goLoad(source.Dir(to))
	if err != nil {
		return err
	}
	if alias == "" {
		alias = p.name
	}
	if alias == "." {
		return giveUp("a package whose names are all taken")
	}
	g.scope.declare(alias, goValue{p, nil}, nil)
	return nil
}

func (s *goScope) typed(name string, t *goType) {
	if s.types == nil {
		s.types = map[string]*goType{}
	}
	s.types[name] = t
}

// namedType is a type by its name, in a scope.
func (m *machine) namedType(name string, s *goScope) (*goType, error) {
	for x := s; x != nil; x = x.up {
		if t := x.types[name]; t != nil {
			return t, nil
		}
	}
	if s.file != nil {
		if t, err := m.packageType(s.file.pkg, name, nil); t != nil || err != nil {
			return t, err
		}
	}
	return goBasic[name], nil
}

// packageType is a type of a package, made with these types where it has
// parameters; nil where it has none of that name.
func (m *machine) packageType(p *goPackage, name string, with []*goType) (*goType, error) {
	full := name
	for _, t := range with {
		full += "," + t.String()
	}
	if t := p.types[full]; t != nil {
		return t, nil
	}
	spec := p.specs[name]
	if spec == nil {
		return nil, nil
	}
	s := &goScope{up: spec.file.scope, file: spec.file, frame: spec.file.scope.frame}
	i := 0
	if spec.spec.TypeParams != nil {
		for _, f := range spec.spec.TypeParams.List {
			for _, n := range f.Names {
				t := &goType{kind: goParam, name: n.Name}
				if i < len(with) {
					t = with[i]
				}
				s.typed(n.Name, t)
				i++
			}
		}
	}
	if spec.spec.Assign.IsValid() {
		t, err := m.goTypeOf(spec.spec.Type, s)
		if err != nil {
			return nil, err
		}
		p.types[full] = t
		return t, nil
	}
	t := &goType{name: full, generic: name, pkg: p}
	if len(with) == 0 {
		t.generic = ""
	}
	t.params = with
	p.types[full] = t
	if err := m.goMade(t, spec.spec.Type, s); err != nil {
		return nil, err
	}
	return t, nil
}

// goMade completes a type with a name.
func (m *machine) goMade(t *goType, e ast.Expr, s *goScope) error {
	of, err := m.goTypeOf(e, s)
	if err != nil {
		return err
	}
	t.of = of
	u := of.under()
	t.kind, t.bits, t.unsigned = u.kind, u.bits, u.unsigned
	return nil
}

// goTypeOf reads a type.
func (m *machine) goTypeOf(e ast.Expr, s *goScope) (*goType, error) {
	if m.depth++; m.depth > maxDepth*10 {
		m.depth--
		return nil, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch e := e.(type) {
	case *ast.Ident:
		t, err := m.namedType(e.Name, s)
		if err == nil && t == nil {
			return nil, giveUp("the type %s", e.Name)
		}
		return t, err
	case *ast.ParenExpr:
		return m.goTypeOf(e.X, s)
	case *ast.SelectorExpr:
		if x, ok := e.X.(*ast.Ident); ok {
			if c := s.find(x.Name); c != nil {
				switch p := c.v.v.(type) {
				case *goPackage:
					t, err := m.packageType(p, e.Sel.Name, nil)
					if err == nil && t == nil {
						return nil, giveUp("the type %s.%s", x.Name, e.Sel.Name)
					}
					return t, err
				case *opaque:
					return outsideType(p.path + "." + e.Sel.Name), nil
				}
			}
		}
	case *ast.StarExpr:
		t, err := m.goTypeOf(e.X, s)
		if err != nil {
			return nil, err
		}
		return pointerTo(t), nil
	case *ast.ArrayType:
		t, err := m.goTypeOf(e.Elt, s)
		if err != nil {
			return nil, err
		}
		if e.Len == nil {
			return &goType{kind: goSlice, elem: t}, nil
		}
		if _, ok := e.Len.(*ast.Ellipsis); ok {
			return &goType{kind: goArray, elem: t, size: -1}, nil
		}
		v, err := m.goEval(e.Len, s)
		if err != nil {
			return nil, err
		}
		n, ok := v.v.(integer)
		if !ok || n < 0 || n > maxItems {
			return nil, undecided("an array of a size that is not known")
		}
		return &goType{kind: goArray, elem: t, size: int(n)}, nil
	case *ast.MapType:
		k, err := m.goTypeOf(e.Key, s)
		if err != nil {
			return nil, err
		}
		t, err := m.goTypeOf(e.Value, s)
		if err != nil {
			return nil, err
		}
		return &goType{kind: goMap, key: k, elem: t}, nil
	case *ast.ChanType:
		t, err := m.goTypeOf(e.Value, s)
		if err != nil {
			return nil, err
		}
		return &goType{kind: goChan, elem: t}, nil
	case *ast.FuncType:
		return m.goSignature(e, s)
	case *ast.InterfaceType:
		t := &goType{kind: goInterface}
		for _, f := range e.Methods.List {
			for _, n := range f.Names {
				t.methods = append(t.methods, n.Name)
			}
			if len(f.Names) > 0 {
				continue
			}
			switch f.Type.(type) {
			case *ast.Ident, *ast.SelectorExpr:
				in, err := m.goTypeOf(f.Type, s)
				if err != nil {
					return nil, err
				}
				if in.is(goInterface) {
					t.methods = append(t.methods, in.under().methods...)
				} else if in.name == "fmt.Stringer" {
					t.methods = append(t.methods, "String")
				} else if in.kind == goOutside {
					t.embeds = append(t.embeds, in)
				}
			}
		}
		return t, nil
	case *ast.StructType:
		t := &goType{kind: goStruct}
		for _, f := range e.Fields.List {
			ft, err := m.goTypeOf(f.Type, s)
			if err != nil {
				return nil, err
			}
			tag := ""
			if f.Tag != nil {
				tag, _ = strconv.Unquote(f.Tag.Value)
			}
			for _, n := range f.Names {
				t.fields = append(t.fields, goField{n.Name, ft, false, tag})
			}
			if len(f.Names) == 0 {
				t.fields = append(t.fields, goField{embeddedName(f.Type), ft, true, tag})
			}
		}
		return t, nil
	case *ast.IndexExpr:
		return m.goInstance(e.X, []ast.Expr{e.Index}, s)
	case *ast.IndexListExpr:
		return m.goInstance(e.X, e.Indices, s)
	case *ast.Ellipsis:
		t, err := m.goTypeOf(e.Elt, s)
		if err != nil {
			return nil, err
		}
		return &goType{kind: goSlice, elem: t}, nil
	}
	return nil, giveUp("a type that is not followed")
}

// outsideType is a type of a package that is not of the tree.
func outsideType(p string) *goType {
	switch p {
	case "time.Duration":
		return tLength
	case "reflect.Kind":
		return &goType{kind: goInt, name: p, bits: 64, unsigned: true}
	case "time.Month", "os.FileMode", "io/fs.FileMode", "log/slog.Level", "syscall.Signal":
		return &goType{kind: goInt, name: p, bits: 64}
	case "fmt.Stringer":
		return &goType{kind: goInterface, name: p, methods: []string{"String"}}
	case "net/http.HandlerFunc":
		return &goType{kind: goFunc, name: p}
	case "net/netip.Addr":
		return tAddr
	case "net/netip.AddrPort":
		return tAddrPort
	case "encoding/json.RawMessage", "net.IP":
		return &goType{kind: goOutside, name: p}
	case "net/http.Header", "net/url.Values":
		return &goType{kind: goMap, name: p, key: tString, elem: tStrings}
	case "net/http.Handler", "io.Reader", "io.Writer", "io.Closer", "context.Context", "net.Listener", "net.Conn", "net.Addr", "os.Signal", "sort.Interface", "io/fs.FS", "io.ReadCloser", "io.WriteCloser", "net/http.ResponseWriter", "net/http.RoundTripper", "sync.Locker", "encoding.TextUnmarshaler":
		return &goType{kind: goInterface, name: p, embeds: []*goType{{kind: goOutside, name: p}}}
	}
	return &goType{kind: goOutside, name: p}
}

func embeddedName(e ast.Expr) string {
	switch e := e.(type) {
	case *ast.StarExpr:
		return embeddedName(e.X)
	case *ast.SelectorExpr:
		return e.Sel.Name
	case *ast.IndexExpr:
		return embeddedName(e.X)
	case *ast.IndexListExpr:
		return embeddedName(e.X)
	case *ast.Ident:
		return e.Name
	}
	return ""
}

func (m *machine) goSignature(e *ast.FuncType, s *goScope) (*goType, error) {
	t := &goType{kind: goFunc}
	each := func(list *ast.FieldList) (types []*goType, err error) {
		if list == nil {
			return nil, nil
		}
		for _, f := range list.List {
			ft, err := m.goTypeOf(f.Type, s)
			if err != nil {
				return nil, err
			}
			for range max(1, len(f.Names)) {
				types = append(types, ft)
			}
		}
		return types, nil
	}
	var err error
	if t.params, err = each(e.Params); err != nil {
		return nil, err
	}
	t.results, err = each(e.Results)
	return t, err
}

func (m *machine) goInstance(x ast.Expr, args []ast.Expr, s *goScope) (*goType, error) {
	var with []*goType
	for _, a := range args {
		t, err := m.goTypeOf(a, s)
		if err != nil {
			return nil, err
		}
		with = append(with, t)
	}
	switch x := x.(type) {
	case *ast.Ident:
		if s.file != nil {
			if t, err := m.packageType(s.file.pkg, x.Name, with); t != nil || err != nil {
				return t, err
			}
		}
	case *ast.SelectorExpr:
		if id, ok := x.X.(*ast.Ident); ok {
			if c := s.find(id.Name); c != nil {
				switch p := c.v.v.(type) {
				case *goPackage:
					if t, err := m.packageType(p, x.Sel.Name, with); t != nil || err != nil {
						return t, err
					}
				case *opaque:
					return outsideType(p.path + "." + x.Sel.Name), nil
				}
			}
		}
	}
	return nil, giveUp("a type that is made of others")
}

// goZero is what a variable of a type holds first.
func (m *machine) goZero(t *goType, s *goScope) (goValue, error) {
	if t == nil {
		return goValue{nil, nil}, nil
	}
	if err := m.use(1); err != nil {
		return goValue{}, err
	}
	if m.depth++; m.depth > maxDepth*10 {
		m.depth--
		return goValue{}, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch u := t.under(); u.kind {
	case goBool:
		return goValue{false, t}, nil
	case goInt:
		return goValue{integer(0), t}, nil
	case goFloat:
		return goValue{0.0, t}, nil
	case goString:
		return goValue{"", t}, nil
	case goStruct:
		r := &goRecord{}
		for _, f := range u.fields {
			v, err := m.goZero(f.t, s)
			if err != nil {
				return goValue{}, err
			}
			r.fields = append(r.fields, &goCell{v: v, t: f.t})
		}
		return goValue{r, t}, nil
	case goArray:
		if u.size < 0 || u.size > maxItems {
			return goValue{}, undecided("an array of a size that is not known")
		}
		r := &goRow{}
		for range u.size {
			v, err := m.goZero(u.elem, s)
			if err != nil {
				return goValue{}, err
			}
			r.a = append(r.a, &goCell{v: v, t: u.elem})
		}
		return goValue{r, t}, nil
	case goOutside:
		o := newObject()
		o.class = &class{name: u.name, builtin: true, outside: true, statics: newObject(), methods: newObject()}
		return goValue{o, t}, nil
	case goParam:
		return goValue{dontKnow("a value of the type " + t.name), nil}, nil
	case goInterface:
		return goValue{nil, nil}, nil
	}
	return goValue{nil, t}, nil
}

// goCopy is a value as it is handed on: structures and arrays are copied.
func goCopy(v goValue) goValue {
	// What an interface holds cannot be changed in place: it is shared.
	held := func(c *goCell) goValue {
		if u := c.t.under(); u != nil && u.kind == goInterface {
			return c.v
		}
		return goCopy(c.v)
	}
	switch x := v.v.(type) {
	case *goRecord:
		r := &goRecord{fields: make([]*goCell, len(x.fields))}
		for i, c := range x.fields {
			r.fields[i] = &goCell{v: held(c), t: c.t}
		}
		v.v = r
	case *goRow:
		r := &goRow{a: make([]*goCell, len(x.a))}
		for i, c := range x.a {
			r.a[i] = &goCell{v: held(c), t: c.t}
		}
		v.v = r
	}
	return v
}

// spot is the place of a node, as the rest of the package knows it.
func (g *goFile) spot(n ast.Node) spot {
	if n == nil {
		return spot{g.f, g.f.Body}
	}
	key := [2]int32{int32(int(n.Pos()) - g.base), int32(int(n.End()) - g.base)}
	if g.calls == nil {
		g.calls, g.funcs = map[[2]int32]*code.Node{}, map[[2]int32]*code.Scope{}
		g.f.Body.Walk(func(k *code.Node) bool {
			switch {
			case k.Is(code.Call) && (k.Kid(0) == nil || !k.Kid(0).Is(code.Name) || k.Kids[0].Name != code.SecondResult):
				g.calls[[2]int32{k.Off, k.End}] = k
			case k.Is(code.Func):
				g.funcs[[2]int32{k.Off, k.End}] = g.f.Funcs[k]
			}
			return true
		})
	}
	if k := g.calls[key]; k != nil {
		return spot{g.f, k}
	}
	return spot{g.f, &code.Node{Kind: code.Unknown, Off: key[0], End: key[1]}}
}

// static is the scope that package value has for a function.
func (g *goFile) static(n ast.Node) *code.Scope {
	at := g.spot(n)
	if s := g.funcs[[2]int32{at.n.Off, at.n.End}]; s != nil {
		return s
	}
	return g.f.Top
}

// wrapped is a whole number as a type of so many bits holds it.
func wrapped(n integer, t *goType) integer {
	if t == nil {
		return n
	}
	u := t.under()
	switch {
	case u.kind != goInt || u.bits == 0 || u.bits == 64:
		return n
	case u.unsigned:
		return integer(uint64(n) & (1<<u.bits - 1))
	}
	shift := 64 - u.bits
	return integer(int64(n) << shift >> shift)
}

// goFit makes a value one of a type, as an assignment does: constants get a type.
func (m *machine) goFit(v goValue, t *goType, s *goScope) (goValue, error) {
	if t != nil && t.kind == goParam {
		t = nil
	}
	if o, ok := v.v.(*opaque); ok {
		if v.t == nil && t != nil && !t.is(goInterface) {
			v.t = t
		}
		_ = o
		return v, nil
	}
	if v.t != nil && v.t.kind == goUntyped {
		if t != nil && !t.is(goInterface) {
			switch x := v.v.(type) {
			case integer:
				if t.is(goFloat) {
					return goValue{float64(x), t}, nil
				}
			case float64:
				if t.is(goInt) && x == math.Trunc(x) {
					return goValue{integer(x), t}, nil
				}
			case nil:
			}
			return goValue{v.v, t}, nil
		}
		switch v.v.(type) {
		case integer:
			v.t = tInt
			if v.rune() {
				v.t = tRune
			}
		case float64:
			v.t = tFloat
		case string:
			v.t = tString
		case bool:
			v.t = tBool
		case nil:
			v.t = nil
		}
		return v, nil
	}
	if _, fn := v.v.(*goClosure); t != nil && !t.is(goInterface) && (v.v == nil || fn && v.t == nil) {
		v.t = t
	}
	if t != nil && t.name != "" && !t.is(goInterface) && v.t != nil && v.t.name == "" { // a type without a name becomes one with one
		v.t = t
	}
	return v, nil
}

// tRuneConstant is the type of a constant that is a letter.
var tRuneConstant = &goType{kind: goUntyped, name: "rune"}

func (v goValue) rune() bool { return v.t == tRuneConstant }
