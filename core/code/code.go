// Package code reads source code as code: a small lexer for each language,
// and one reader above them that gives the same nodes for every language:
// calls, bindings, imports, exports, functions, classes, conditions.
//
// It is not a compiler's front end. It never fails: what it cannot read it
// steps over, and says nothing about it. It never hangs: every step consumes
// a token, and nesting is limited. What the nodes come to is for package
// value to say.
package code

import (
	"strings"
	"sync"

	"ubique/core/place"
)

// Language is a source language that can be read.
type Language uint8

// The languages.
const (
	None Language = iota
	JavaScript
	TypeScript
	JSX // JavaScript or TypeScript with JSX
	Python
	Go
	Ruby
	Java
	Kotlin
	Groovy // build scripts of Gradle
	PHP
	CSharp
	Rust
	Elixir
)

// LanguageOf tells the language from a file name.
func LanguageOf(name string) Language {
	for i := len(name) - 1; i >= 0 && name[i] != '/'; i-- {
		if name[i] != '.' {
			continue
		}
		switch name[i:] {
		case ".js", ".mjs", ".cjs", ".jsx", ".tsx":
			return JSX
		case ".ts", ".mts", ".cts":
			return TypeScript
		case ".py":
			return Python
		case ".go":
			return Go
		case ".rb", ".ru", ".rake", ".gemspec":
			return Ruby
		case ".java":
			return Java
		case ".kt", ".kts":
			return Kotlin
		case ".gradle", ".groovy":
			return Groovy
		case ".php":
			return PHP
		case ".cs":
			return CSharp
		case ".rs":
			return Rust
		case ".ex", ".exs":
			return Elixir
		}
		return None
	}
	return None
}

// Kind is the kind of a node.
type Kind uint8

// The kinds of nodes. The comment says what Name and Kids hold.
const (
	Unknown    Kind = iota
	Name            // Name
	String          // Name: the decoded text
	Number          // Name: as written
	Template        // Kids: String nodes and expressions in order
	True            //
	False           //
	Null            // null, None, nil
	Undefined       //
	Member          // Kids[0].Name
	Index           // Kids[0][Kids[1]]
	Call            // Kids[0](Kids[1:]...); arguments may be Keyword or Spread
	New             // new Kids[0](Kids[1:]...); Alias: the name of the constant of an enumeration that it makes
	Keyword         // Name = Kids[0], in a call
	Spread          // ...Kids[0]
	Object          // Kids: Pair or Spread
	Pair            // Name: Kids[0]; a computed key is Kids[1]
	Array           // Kids; tuples and sets too
	Func            // Name(Kids[0]: Params) Kids[1]: Block or expression; decorators after that
	Params          // Kids: Param
	Param           // Name = Kids[0] (may be nil); a pattern is Kids[1]
	Binary          // Kids[0] Name Kids[1]; operators are named as in JavaScript
	Unary           // Name Kids[0]
	Cond            // Kids[0] ? Kids[1] : Kids[2]
	Assign          // Kids[0] Name Kids[1]
	Await           // Kids[0]
	Comp            // Kids: element, then by each letter of Name: f for a loop variable and what is gone through, i for a condition
	Markup          // JSX: Kids are the expressions in it
	Block           // Kids: statements
	ExprStmt        // Kids[0]
	Bind            // Name const, let, var or empty: Kids[0] = Kids[1] (may be nil)
	If              // Kids: test, then, else (may be nil)
	Return          // Kids[0] (may be nil)
	Throw           // Kids[0] (may be nil)
	Import          // Name: module; Kids: ImportName
	ImportName      // Name: what is imported ("default", "*" for all); Alias: its name here
	Export          // Name as Alias outside; Kids[0]: value or declaration; Module for re-exports
	Class           // Name; Kids[0]: Array of bases, Kids[1]: Block; decorators after that
	Loop            // Kids: head expressions, body last; with Name "for" what is done first, a test, what is done after each turn, body, an empty Block for each that is not there; with "do" the test and the body; with Name "of" a name or a list of names, what is gone through, body (Alias: the name of the key), with "in" the same for its keys
	Try             // Kids: Blocks; the first is the guarded one; Name of the others: catch (Alias: what is caught, a colon, its name), else, finally
	With            // Kids: Bind or expressions, body last
	Switch          // Kids[0]: subject; then Case each
	Jump            // Name: break, continue (Alias: its label), or global with the Names that are not the function's own
	Case            // Kids[0]: Block, then what the subject is compared with; none: all that no other takes
)

// Flags of a node.
const (
	TypeOnly   = 1 << iota // an import or export that leaves no code
	Rest                   // a parameter that takes the rest
	Static                 // a class member that belongs to the class
	Async                  // an async function
	Exported               // a declaration that is exported
	Star                   // a from-import of everything
	TopName                // `import a.b` binds a
	Arrow                  // an arrow function or lambda whose body is an expression
	Method                 // a function in a class or an object
	OptionalOp             // ?. or a guarded access
	Getter                 // a function that is read like a field
	Address                // the address of a value is handed over (Go); a block (Ruby), a method (Java) as a value; what is lent to be set (Rust)
	Symbol                 // a text, or a key, is a symbol (Ruby)
)

// Node is a piece of source. One type serves expressions and statements, so
// that everything above reads every language alike.
type Node struct {
	Kind     Kind
	Flag     uint16
	Name     string
	Alias    string
	Kids     []*Node
	Off, End int32
}

// Kid gives a kid, nil where there is none; safe on nil.
func (n *Node) Kid(i int) *Node {
	if n == nil || i >= len(n.Kids) {
		return nil
	}
	return n.Kids[i]
}

// Is reports whether the node is of the kind; safe on nil.
func (n *Node) Is(k Kind) bool { return n != nil && n.Kind == k }

// Args are the arguments of a call.
func (n *Node) Args() []*Node {
	if n == nil || len(n.Kids) == 0 {
		return nil
	}
	return n.Kids[1:]
}

// Walk calls visit for the node and all below it; visit says whether to go on
// below.
func (n *Node) Walk(visit func(*Node) bool) {
	if n == nil || !visit(n) {
		return
	}
	if n.Kind == Array && n.Alias == Whole && len(n.Kids) > 0 { // its value is made of the same nodes
		n.Kids[0].Walk(visit)
		return
	}
	for _, k := range n.Kids {
		k.Walk(visit)
	}
}

// Dotted gives a chain of names and members as text, such as "process.env";
// empty for anything else.
func (n *Node) Dotted() string {
	switch {
	case n.Is(Name):
		return n.Name
	case n.Is(Member):
		if left := n.Kids[0].Dotted(); left != "" {
			return left + "." + n.Name
		}
	}
	return ""
}

// Yield is the name of what a generator gives to whoever goes through it.
const Yield = "yield"

// Setter stands in front of the name of a function of a class that sets what is
// written like a field.
const Setter = "set "

// Sized is the name of an array of a type that is made with so many elements: Alias
// is the type, the kids are the sizes.
const Sized = "\x00sized"

// Structure is the alias of a class of Ruby that Struct.new or Data.define made:
// its first method stands for what they give it.
const Structure = "structure"

// Namespace is the name of the call that makes a namespace of TypeScript.
const Namespace = "namespace"

// Slice is the name of an index that takes a part: x[a:b:c]. Its kids are the
// three ends, Undefined where one is not given.
const Slice = "slice"

// Rest1 is the name of an index that takes all from one place on: x[1:]. Its
// kid is the place.
const Rest1 = "rest"

// LastOf is the name of an array that is no list: expressions with commas, of
// which the last is the value (ECMA-262 13.16).
const LastOf = ","

// Whole is the alias of such an array of a statement and its value: what the
// statement does is not all told by the value.
const Whole = "whole"

// Chosen is the label of a choice that something inside leaves.
const Chosen = "choice"

// When is the alias of the first comparison of a subject with the pattern of a
// case, Again that of those after it: the subject is not worked out again.
const (
	When  = "when"
	Again = "again"
)

// Elvis is the alias of an || that gives what it is asked about (PHP).
const Elvis = "?:"

// Pattern stands at the front of the name of a node that is a literal of a
// regular expression; what follows is its source, with slashes and flags.
const Pattern = "pattern:"

// Guard is a condition under which a piece of code runs.
type Guard struct {
	Test  *Node
	Not   bool // runs where the test does not hold
	Exit  bool // and the program ends where it holds
	Scope *Scope
}

// Site is a node with what surrounds it.
type Site struct {
	Node   *Node
	Scope  *Scope
	Guards []Guard
	Value  *Node  // the value, for an assignment
	Op     string // its operator: =, ||=, +=
	InTry  bool   // in a guarded block that catches errors
	Turn   bool   // an assignment in a loop that goes on while something holds
}

// Binding is one way in which a name gets its value in a scope.
type Binding struct {
	Name    string
	Kind    string   // const, let, var, param, func, class, import, or empty
	Value   *Node    // nil for parameters without a default and for imports
	Path    []string // the keys that lead into Value, for destructuring
	Default *Node    // the default in a destructuring
	Op      string   // the operator, for `x += 1`
	Import  *Node    // the Import node, for imports
	Name2   *Node    // the ImportName, for imports
	Func    *Node    // the function, for parameters and functions
	Index   int      // the place of a parameter
	Off     int32
	Guards  []Guard
	From    *Scope // where the value is written, where that is another scope
	Turn    bool   // in a loop that goes on while something holds
	Try     *Node  // the try around it whose handler goes on; nil for none
	Filled  bool   // a field that a library gives another value, as an annotation says
}

// Scope is a stretch in which names are known: a file, a function, a class.
type Scope struct {
	Parent *Scope
	Func   *Node // the function, nil at the top
	Class  *Node // the class that a method or a class body belongs to
	Names  map[string][]*Binding
	File   *File
}

// File is a source file that has been read.
type File struct {
	Name    string
	Lang    Language
	Src     []byte
	Lines   *place.Lines
	Body    *Node
	Top     *Scope
	Calls   []Site // every call and new
	Imports []Site // every import, also require and dynamic ones with a literal name
	Sets    []Site // assignments to members and indexes
	Exports map[string]*Binding
	Stars   []*Node          // re-exports of everything
	Funcs   map[*Node]*Scope // the scope inside each function
	Classes map[string]*Node // by name
	Inside  map[*Node]*Scope // the scope inside each class
	Names   map[string]int   // how often each name is used

	Used map[string]bool // property names that are read

	Skimmed bool // only its imports were read

	whole sync.Once
	made  any
}

// Whole is what another reader makes of the source, which is asked once for a file.
func (f *File) Whole(read func(src []byte) any) any {
	f.whole.Do(func() { f.made = read(f.Src) })
	return f.made
}

// At is the place of a node.
func (f *File) At(n *Node) place.Span {
	if n == nil || f.Lines == nil { // a file that stands for a place only
		return place.Whole(f.Name)
	}
	return f.Lines.Span(f.Name, int(n.Off), int(n.End))
}

// Text is the source text of a node, on one line and shortened.
func (f *File) Text(n *Node) string {
	if n == nil {
		return ""
	}
	return f.Between(n.Off, n.End, 60)
}

// Between is the source text of a stretch, on one line and shortened. Ends that
// lie outside of the file, as broken source may leave them, are moved into it.
func (f *File) Between(from, end int32, limit int) string {
	size := int32(len(f.Src))
	from = max(0, min(from, size))
	end = max(from, min(end, size))
	return Squeeze(string(f.Src[from:end]), limit)
}

// Squeeze puts text on one line of at most limit characters.
func Squeeze(s string, limit int) string {
	out := make([]rune, 0, limit+1)
	space := false
	for _, r := range s {
		if r == ' ' || r == '\n' || r == '\t' || r == '\r' {
			space = len(out) > 0
			continue
		}
		if space {
			out = append(out, ' ')
			space = false
		}
		if len(out) >= limit {
			return string(out[:limit-1]) + "…"
		}
		out = append(out, r)
	}
	return string(out)
}

// Read reads a source file. It never fails; a language that is not known
// gives a file without content.
func Read(name string, src []byte, lines *place.Lines) *File {
	return ReadAs(LanguageOf(name), name, src, lines)
}

// ReadAs reads a source file whose language its name does not tell.
func ReadAs(lang Language, name string, src []byte, lines *place.Lines) *File {
	f := &File{Name: name, Lang: lang, Src: src, Lines: lines}
	switch f.Lang {
	case JavaScript, TypeScript, JSX:
		toks := lexJS(src, f.Lang)
		f.Body = parse(f.Lang, src, toks)
		release(toks)
	case Python:
		toks := lexPython(src)
		f.Body = parse(f.Lang, src, toks)
		release(toks)
	case Go:
		f.Body = readGo(src)
	case Ruby, Java, Kotlin, Groovy, PHP, CSharp, Rust, Elixir:
		toks := lexMore(src, lang)
		f.Body = parseMore(lang, src, toks)
		release(toks)
	default:
		f.Body = &Node{Kind: Block}
	}
	collect(f)
	return f
}

// InBraces reports whether a text in a formatted text of Python stands in braces there, as
// code, and is none of the text itself.
func InBraces(f *File, k *Node) bool {
	i := int(k.Off)
	if i <= 0 || i >= len(f.Src) || f.Src[i] != '"' && f.Src[i] != '\'' {
		return false
	}
	for i--; i > 0 && f.Src[i] == ' '; i-- {
	}
	return f.Src[i] == '{'
}

// Plain reports whether a part of a formatted text of Python stands there as it is, without
// a format or a conversion behind it.
func Plain(f *File, k *Node) bool {
	if k.Is(String) && !InBraces(f, k) {
		return true
	}
	end := int(k.End)
	for end >= 0 && end < len(f.Src) && (f.Src[end] == ' ' || f.Src[end] == ')') {
		end++
	}
	rest := string(f.Src[min(max(0, end), len(f.Src)):min(max(0, end)+4, len(f.Src))])
	return strings.HasPrefix(rest, "}") || strings.HasPrefix(rest, "!s}") || strings.HasPrefix(rest, ":}") || strings.HasPrefix(rest, ":s}") || strings.HasPrefix(rest, ":d}")
}
