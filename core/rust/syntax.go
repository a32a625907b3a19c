package rust

// File is a source file.
type File struct {
	Items []*Item
}

// ItemKind is the kind of an item.
type ItemKind uint8

// The kinds of items.
const (
	FnItem ItemKind = iota
	StructItem
	EnumItem
	ImplItem
	TraitItem
	ModItem
	UseItem
	ConstItem // and static
	TypeItem
	MacroItem // a macro that is called, or declared by macro_rules!
)

// Item is a declaration.
type Item struct {
	Kind     ItemKind
	Name     string
	Attrs    []*Attr
	Generics []Generic
	Fn       *Fn
	Fields   []Field   // of a structure
	Tuple    bool      // whose fields have no names
	Variants []Variant // of an enumeration
	Items    []*Item   // of a module, an impl, a trait
	Inline   bool      // a module whose items stand here
	Uses     []Use
	Type     *Type // of a constant, an alias; of what an impl is for
	Trait    *Type // of an impl
	Value    *Expr // of a constant; what a macro is called with
	Static   bool
	Rules    []Rule // of macro_rules!
	Off, End int32
}

// Attr is an attribute: its path, and what it is given.
type Attr struct {
	Path string // serde, arg, tokio::main
	Args []AttrArg
	Text string // of #[doc = "…"] and its like
}

// AttrArg is one thing that an attribute is given: a name, with or without a value, or
// with a list of its own.
type AttrArg struct {
	Name  string
	Value *Expr
	Args  []AttrArg
}

// Arg finds what an attribute is given by a name; nil where it is not.
func (a *Attr) Arg(name string) *AttrArg {
	for i := range a.Args {
		if a.Args[i].Name == name {
			return &a.Args[i]
		}
	}
	return nil
}

// Generic is a type that an item is made for, and what it is bound to.
type Generic struct {
	Name   string
	Bounds []*Type
}

// Fn is a function.
type Fn struct {
	Name     string
	Generics []Generic
	Self     bool // its first argument is the object
	Mut      bool // which it changes
	Params   []Param
	Ret      *Type
	Body     *Expr // nil for one that is only declared, or could not be read
	Async    bool
	Broken   string // why its body could not be read
	Off      int32
}

// Param is a parameter.
type Param struct {
	Pat  *Pat
	Type *Type
}

// Field is a field of a structure or of a variant.
type Field struct {
	Name  string
	Type  *Type
	Attrs []*Attr
	Off   int32
}

// Variant is one of an enumeration.
type Variant struct {
	Name   string
	Fields []Field
	Tuple  bool
	Value  *Expr
	Attrs  []*Attr
}

// Use is a name that a use declaration brings in.
type Use struct {
	Path []string
	As   string
	All  bool // everything in it
}

// TypeKind is the kind of a type.
type TypeKind uint8

// The kinds of types.
const (
	PathType TypeKind = iota
	RefType
	TupleType
	ArrayType // a slice too
	FnType
	NeverType
	InferType
	BoundType // impl T, dyn T
)

// Type is a type: of a path, what stands in its angle brackets is Args.
type Type struct {
	Kind TypeKind
	Path []string
	Args []*Type
	Mut  bool
	Size *Expr
	Self *Type // of <T as Trait>::Name
}

// Last is the last name of the path of a type; empty for any other. References are
// looked through.
func (t *Type) Last() string {
	t = t.Bare()
	if t == nil || len(t.Path) == 0 {
		return ""
	}
	return t.Path[len(t.Path)-1]
}

// Bare is a type without the references around it.
func (t *Type) Bare() *Type {
	for t != nil && t.Kind == RefType && len(t.Args) == 1 {
		t = t.Args[0]
	}
	return t
}

// Arg is the type in angle brackets at a place; nil where there is none.
func (t *Type) Arg(i int) *Type {
	if t = t.Bare(); t == nil || i >= len(t.Args) {
		return nil
	}
	return t.Args[i]
}

// ExprKind is the kind of an expression or a statement.
type ExprKind uint8

// The kinds of expressions. The comment says what the parts hold.
const (
	LitExpr      ExprKind = iota // Lit, Text
	PathExpr                     // Path, Types (of its last name), Head (the type of <T>::x, or those of Vec::<T>::new)
	CallExpr                     // Kids[0](Kids[1:])
	MethodExpr                   // Kids[0].Text::<Types>(Kids[1:])
	FieldExpr                    // Kids[0].Text
	IndexExpr                    // Kids[0][Kids[1]]
	UnaryExpr                    // Text Kids[0]: - ! *
	RefExpr                      // & Kids[0]; Mut
	BinaryExpr                   // Kids[0] Text Kids[1]
	AssignExpr                   // Kids[0] Text Kids[1]
	RangeExpr                    // Kids[0] Text Kids[1]; either may be nil
	CastExpr                     // Kids[0] as Type
	TryExpr                      // Kids[0]?
	AwaitExpr                    // Kids[0].await
	TupleExpr                    // Kids
	ArrayExpr                    // Kids; with Text ";" the element and how many
	StructExpr                   // Path { Fields, ..Kids[0] }
	BlockExpr                    // Kids: statements; Tail: the last is the value; Label; Text: async, unsafe, const; Move
	IfExpr                       // Kids: test, then, else (may be nil)
	LetExpr                      // let Pat = Kids[0], as a test
	MatchExpr                    // Kids[0]; Arms
	LoopExpr                     // Text loop: Kids[0] body; while: test, body; for: Pat in Kids[0], body Kids[1]; Label
	ClosureExpr                  // Params, Type, Kids[0]; Move
	ReturnExpr                   // Kids[0] or nothing
	BreakExpr                    // Label, Kids[0] or nothing
	ContinueExpr                 // Label
	MacroExpr                    // Path!(Kids), or Raw where its words are no expressions
	LetStmt                      // let Pat: Type = Kids[0] else Kids[1]
	ItemStmt                     // Item
	ExprStmt                     // Kids[0];
)

// LitKind is the kind of a literal.
type LitKind uint8

// The kinds of literals.
const (
	NumberLit LitKind = iota
	TextLit
	CharLit
	BoolLit
	BytesLit
	ByteLit
)

// Expr is an expression or a statement.
type Expr struct {
	Kind     ExprKind
	Lit      LitKind
	Mut      bool // of a reference
	Tail     bool
	Move     bool
	Text     string
	Label    string
	Path     []string
	Types    []*Type
	Head     *Type
	Type     *Type
	Pat      *Pat
	Kids     []*Expr
	Fields   []FieldValue
	Arms     []Arm
	Params   []Param
	Item     *Item
	Raw      []token
	Branches []Branch // of select!
	Off, End int32
}

// FieldValue is a field of a structure that is made.
type FieldValue struct {
	Name  string
	Value *Expr
}

// Arm is one of a match.
type Arm struct {
	Pat   *Pat
	Guard *Expr
	Body  *Expr
}

// Branch is one of select!: what comes first is bound to the pattern.
type Branch struct {
	Pat  *Pat
	From *Expr
	Body *Expr
}

// PatKind is the kind of a pattern.
type PatKind uint8

// The kinds of patterns.
const (
	WildPat   PatKind = iota
	NamePat           // Name, with Kids[0] what it must be too
	LitPat            // Lo
	RangePat          // Lo, Hi; Text its sign
	PathPat           // Path
	TuplePat          // Kids; of a path, those of a variant
	StructPat         // Path, Fields
	OrPat             // Kids
	RefPat            // Kids[0]
	SlicePat          // Kids
	RestPat           // ..
)

// Pat is a pattern.
type Pat struct {
	Kind   PatKind
	Name   string
	Mut    bool
	Text   string
	Path   []string
	Lo, Hi *Expr
	Kids   []*Pat
	Fields []FieldPat
	Off    int32
}

// FieldPat is a field of a pattern.
type FieldPat struct {
	Name string
	Pat  *Pat
}

// Rule is one of macro_rules!: what it takes, and what it makes of it.
type Rule struct {
	Takes, Makes []token
}
