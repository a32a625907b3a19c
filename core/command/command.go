// Package command reads command lines as a shell would and follows them,
// through wrappers, package scripts and shell scripts of the tree, to the
// program that ends up running, its flags and the file or module that it
// loads. It runs nothing.
package command

import (
	"encoding/json"
	"errors"
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/value"
)

// Word is one word of a command line.
type Word struct {
	Value  *value.Value // what it comes to
	Text   string       // as it is when it is literal, else as written
	At     place.Span
	Bare   bool // not quoted: an empty value makes the word vanish
	Single bool // in single quotes or in an exec form: nothing is expanded
	Split  bool // a variable without quotes: it becomes a word for each of its own
}

// Literal reports whether the word is plain text.
func (w Word) Literal() bool { return w.Value != nil && w.Value.Kind == value.Str }

// Assign is a variable that is set for a command.
type Assign struct {
	Name  string
	Value *value.Value
	At    place.Span
	Gone  bool // it is taken out of the environment; without a name all are
}

// Simple is one simple command.
type Simple struct {
	Env        []Assign
	Words      []Word
	Background bool
	Piped      bool  // its output goes into another program
	Guarded    bool  // in a branch or a loop of a script
	Branch     []int // the branches that it stands in, from the outermost
	Tests      []Test
	Handed     bool // the arguments of the script are among its words
	Inner      bool // a subshell runs it, whose end ends nothing else
	Spare      bool // it runs only where the one before it fails: A || B
	At         place.Span
}

// Test is a condition that a command stands under.
type Test struct {
	On  *value.Value // nil: it cannot be told
	Not bool         // it must not hold
}

// Line is a command line that has been parsed.
type Line struct {
	Commands []Simple
	Exec     bool   // an exec form: no shell reads it
	File     string // the script in which it stands
	Other    bool   // it puts arguments that are not known in the place of its own

	wants bool // it asks for files, and none could be read
	text  string
	o     origin
}

// with reads a line again that asks for files, now that the tree and the folder are known.
func (l Line) with(c Context) Line {
	if !l.wants || c.Tree == nil {
		return l
	}
	o := l.o
	o.read, o.dir, o.with, o.image = c.shipped, c.Dir, c.With, c.InImage != nil
	again, err := parse(l.text, o)
	if err != nil {
		return l
	}
	again.File, again.Exec, again.wants = l.File, l.Exec, false
	return again
}

// origin maps places in the text of a command to places in its file. The
// text stands at one place (a line of a process file, a string in JSON) or is
// itself a file.
type origin struct {
	at     place.Span
	file   bool
	given  bool // the arguments are known
	args   []Word
	read   func(name string) (string, bool) // a file of the tree that ships; nil: none is read
	dir    string                           // the folder that a script runs in
	script string                           // the script itself
	with   *value.Environ                   // the environment that it runs in; nil where none is given
	vars   map[string]*value.Value          // what the command around it sets
	image  bool                             // it runs in an image, whose build may have made files
}

func (o origin) span(pos, end syntax.Pos) place.Span {
	if !pos.IsValid() {
		return o.at
	}
	if o.file {
		return place.Span{File: o.at.File, Line: int(pos.Line()), Col: int(pos.Col()), EndLine: int(end.Line()), EndCol: int(end.Col())}
	}
	if pos.Line() != 1 || end.Line() != 1 {
		return o.at
	}
	s := o.at
	s.Col += int(pos.Col()) - 1
	s.EndLine, s.EndCol = s.Line, o.at.Col+int(end.Col())-1
	return s
}

// Parse reads a command line as POSIX sh and bash do. The place is that of
// its first character.
func Parse(text string, at place.Span) (Line, error) { return parse(text, origin{at: at}) }

// ParseFile reads a shell script that is given arguments; read gives the files
// of the tree that it may take in, seen from the folder it runs in, and with the
// environment, where one is given; image says that it runs in an image.
func ParseFile(name, text string, args []Word, dir string, with *value.Environ, read func(name string) (string, bool), image bool) (Line, error) {
	line, err := parse(text, origin{at: place.Whole(name), file: true, given: true, args: args, read: read, dir: dir, script: name, with: with, image: image})
	line.File = name
	return line, err
}

// ParseExec makes a command of words that no shell reads: an exec form.
func ParseExec(words []string, at []place.Span) Line {
	var c Simple
	for i, w := range words {
		c.Words = append(c.Words, Word{Value: value.Text(w, at[i]), Text: w, At: at[i], Single: true})
	}
	if len(at) > 0 {
		c.At = at[0]
	}
	return Line{Commands: []Simple{c}, Exec: true}
}

// Strings reads a JSON list of strings, the exec form of container files.
func Strings(text string) ([]string, bool) {
	var list []string
	err := json.Unmarshal([]byte(text), &list)
	return list, err == nil
}

// maxCalls is how many calls of a script's functions are read.
const maxCalls = 256

const maxLine = 1 << 16

func parse(text string, o origin) (Line, error) {
	if len(text) > maxLine {
		return Line{}, errors.New("the command is too long to be read")
	}
	p := syntax.NewParser(syntax.Variant(syntax.LangBash))
	f, err := p.Parse(strings.NewReader(text), "")
	if err != nil {
		return Line{}, err
	}
	r := &lineReader{o: o, given: o.given, args: o.args, with: o.with, vars: maps.Clone(o.vars)}
	for _, s := range f.Stmts {
		r.stmt(s, false)
	}
	return Line{Commands: r.list, Other: o.given && r.other, wants: r.wants, text: text, o: o}, nil
}

type lineReader struct {
	o    origin
	list []Simple
	vars map[string]*value.Value

	exported map[string]bool         // variables that programs are given
	funcs    map[string]*syntax.Stmt // functions of the script
	calls    int                     // of them so far
	given    bool                    // the arguments of the script are known
	other    bool                    // they were replaced by what is not known
	args     []Word
	rest     []Word                             // the arguments behind the options that getopts read
	tables   map[string]map[string]*value.Value // lists of words by names (bash); nil for one that is not known
	arrays   map[string][]Word                  // lists of words (bash); nil for one that is not known
	folders  map[string]string                  // variables that hold a folder of the tree, and which
	rooted   map[string]bool                    // variables whose text begins with such a folder
	absent   map[string]bool                    // variables that were taken out
	strict   bool                               // a variable that is not set ends the script
	within   []int                              // the branches that are being read
	tests    []Test                             // what decides about these
	branches int                                // how many there were
	taken    int                                // files that were taken in
	with     *value.Environ                     // the environment that it runs in; nil where none is given

	redirs        []*syntax.Redirect // of the statement that is read
	redirected    bool               // something is written into a file
	loops         int                // whose turns are read one by one
	leaves        string             // break or continue, of one of them; return, of a function
	inFunc        int                // the branches around the call of the function that is read
	unrolled      int                // turns of loops that were gone through
	substitutions int                // how many $(…) were worked out
	prints        bool               // what commands print is of interest
	printing      int                // the branches around the substitution
	lost          bool               // what is printed cannot be told
	wants         bool               // it asks for files, and none is read
	gone          string             // a file that was taken in and cannot be read: what it sets is not known
}

func (r *lineReader) stmt(s *syntax.Stmt, guarded bool) {
	if s == nil {
		return
	}
	before := len(r.list)
	redirs := r.redirs
	r.redirs = s.Redirs
	for _, d := range s.Redirs {
		r.redirected = r.redirected || d.Op == syntax.RdrOut || d.Op == syntax.AppOut
	}
	r.command(s.Cmd, guarded)
	r.redirs = redirs
	if s.Background {
		for i := before; i < len(r.list); i++ {
			r.list[i].Background = true
		}
	}
}

func (r *lineReader) stmts(list []*syntax.Stmt, guarded bool) {
	for _, s := range list {
		if r.leaves != "" {
			return
		}
		r.stmt(s, guarded)
	}
}

func (r *lineReader) command(c syntax.Command, guarded bool) {
	switch c := c.(type) {
	case *syntax.FuncDecl:
		if r.funcs == nil {
			r.funcs = map[string]*syntax.Stmt{}
		}
		if c.Name != nil {
			r.funcs[c.Name.Value] = c.Body
		}
	case *syntax.CallExpr:
		if len(c.Args) > 0 {
			name := c.Args[0].Lit()
			r.arguments(name, c.Args[1:])
			switch {
			case name == "set":
				r.exportsAll(c.Args[1:])
			case name == "unset":
				for _, n := range unsets(r.words(c.Args[1:])) {
					if r.vars == nil {
						r.vars = map[string]*value.Value{}
					}
					r.vars[n.Name] = value.Text("", n.At)
					if r.absent == nil {
						r.absent = map[string]bool{}
					}
					r.absent[n.Name] = true
				}
			case name == "cd":
				r.changes(c.Args[1:])
			case name == "printf" && len(c.Args) > 3 && c.Args[1].Lit() == "-v":
				r.printsTo(c)
			case name == "eval":
				r.evaluates(c.Args[1:], guarded)
				return
			case (name == "mapfile" || name == "readarray") && len(c.Args) > 0:
				r.readsList(c)
			case name == "return" && r.calls > 0 && len(r.within) == r.inFunc:
				r.leaves = "return"
				return
			case name == "read":
				text, ok := r.input(r.redirs)
				line, _, _ := strings.Cut(text, "\n")
				r.reads(c, line, ok)
			case r.leave(name):
				return
			case (name == "." || name == "source") && len(c.Args) > 1:
				if r.takes(c.Args[1], c.Args[2:], guarded) {
					return
				}
				if file := r.word(c.Args[1]); !settings[path.Base(file.Text)] {
					r.gone = file.Text
				}
			}
			named := c.Args[1:]
			var before []Word
			if name == "" && len(r.funcs) > 0 { // "$1", "$@", "$role"
				name, before, named = r.called(c.Args)
			}
			if body, ok := r.funcs[name]; ok && name != "" {
				if body != nil && r.calls < maxCalls {
					r.calls++
					given, args := r.given, r.args
					own := append(before, r.words(named)...)
					r.given, r.args = len(own) <= 64, own // a function has arguments of its own
					defer func() { r.given, r.args = given, args }()
					r.funcs[name] = nil // it does not call itself
					in := r.inFunc
					r.inFunc = len(r.within)
					r.stmt(body, guarded)
					if r.leaves == "return" {
						r.leaves = ""
					}
					r.inFunc = in
					r.funcs[name] = body
				}
				return
			}
		}
		s := Simple{At: r.o.span(c.Pos(), c.End()), Guarded: guarded, Branch: slices.Clone(r.within), Tests: slices.Clone(r.tests)}
		for _, a := range c.Assigns {
			if a.Name == nil {
				continue
			}
			if a.Array != nil && len(c.Args) == 0 {
				r.array(a)
				continue
			}
			if a.Index != nil && len(c.Args) == 0 {
				r.setsElement(a)
				continue
			}
			v := value.Text("", r.o.at)
			if a.Value != nil {
				v = r.word(a.Value).Value
			}
			if a.Append && a.Array == nil {
				old := r.vars[a.Name.Value]
				if old == nil {
					old = value.Variable(a.Name.Value, value.ReadsEmpty, r.o.at)
				}
				v = value.Concat(old, v)
			}
			s.Env = append(s.Env, Assign{Name: a.Name.Value, Value: v, At: r.o.span(a.Pos(), a.End())})
			if len(c.Args) == 0 {
				r.set(a.Name.Value, v)
				r.holds(a.Name.Value, a.Value)
				s.Env[len(s.Env)-1].Value = r.passed(a.Name.Value)
			}
		}
		for _, w := range c.Args {
			s.Handed = s.Handed || r.given && len(r.args) > 0 && whole(w)
		}
		s.Words = r.stood(r.words(c.Args), r.redirs)
		if r.prints && len(s.Words) > 0 {
			r.print(s.Words[0].Text, s.Words[1:], s.At)
		}
		if len(s.Words) > 0 || len(s.Env) > 0 {
			r.list = append(r.list, s)
		}
	case *syntax.BinaryCmd:
		before := len(r.list)
		if list := chained(c); len(list) > 2 { // A && B && C
			r.inTurn(list, guarded)
			return
		}
		if test, not := r.test(c.X); test != nil && (c.Op == syntax.AndStmt || c.Op == syntax.OrStmt) {
			r.choose(test, not != (c.Op == syntax.OrStmt), func() { r.stmt(c.Y, true) }, nil)
			return
		}
		if b, ok := c.X.Cmd.(*syntax.BinaryCmd); ok && c.Op == syntax.OrStmt && b.Op == syntax.AndStmt && !c.X.Negated && surely(b.Y) { // A && B || C
			if test, not := r.test(b.X); test != nil {
				r.choose(test, not, func() { r.stmt(b.Y, true) }, func() { r.stmt(c.Y, true) })
				return
			}
		}
		if c.Op == syntax.AndStmt && tests(c.X) {
			r.choose(nil, false, func() { r.stmt(c.Y, true) }, nil)
			return
		}
		piped := c.Op == syntax.Pipe || c.Op == syntax.PipeAll
		if piped {
			r.inShell(func() { r.stmt(c.X, guarded) })
		} else {
			r.stmt(c.X, guarded)
		}
		if piped {
			for i := before; i < len(r.list); i++ {
				r.list[i].Piped = true
			}
			last := len(r.list)
			r.inShell(func() { r.stmt(c.Y, guarded) })
			// The first program of a pipe is the one that matters here.
			r.list = append(append([]Simple(nil), r.list[last:]...), r.list[:last]...)
			return
		}
		if c.Op == syntax.OrStmt {
			from := len(r.list)
			r.choose(nil, false, func() { r.stmt(c.Y, true) }, nil)
			for i := from; i < len(r.list); i++ {
				r.list[i].Spare = true
			}
			return
		}
		r.stmt(c.Y, guarded)
	case *syntax.ArithmCmd:
		r.reckons(c.X)
	case *syntax.LetClause:
		for _, x := range c.Exprs {
			r.reckons(x)
		}
	case *syntax.Subshell:
		before := len(r.list)
		r.inShell(func() { r.stmts(c.Stmts, guarded) })
		for i := before; i < len(r.list); i++ {
			r.list[i].Inner = true
		}
	case *syntax.Block:
		r.stmts(c.Stmts, guarded)
	case *syntax.IfClause:
		r.ifClause(c)
	case *syntax.WhileClause:
		if r.options(c, guarded) || r.overLines(c, r.redirs, guarded) || r.turns(c, guarded) {
			return
		}
		for _, s := range c.Cond {
			if call, ok := s.Cmd.(*syntax.CallExpr); ok && len(call.Args) > 0 && (call.Args[0].Lit() == "read" || call.Args[0].Lit() == "getopts") {
				for _, w := range append(call.Args[1:len(call.Args):len(call.Args)], nil) {
					name := "OPTARG"
					if w != nil {
						name = w.Lit()
					}
					if syntax.ValidName(name) {
						r.set(name, value.NotKnown("what "+call.Args[0].Lit()+" reads", r.o.span(c.Pos(), c.End())))
					}
				}
			}
		}
		r.choose(nil, false, func() { r.stmts(c.Do, true) }, nil)
	case *syntax.ForClause:
		if l, ok := c.Loop.(*syntax.CStyleLoop); ok && r.counted(l, c.Do, guarded) || r.overWords(c, guarded) {
			return
		}
		if i, ok := c.Loop.(*syntax.WordIter); ok && i.Name != nil {
			r.set(i.Name.Value, value.NotKnown("one of several words", r.o.span(i.Pos(), i.End())))
		}
		r.choose(nil, false, func() { r.stmts(c.Do, true) }, nil)
	case *syntax.CaseClause:
		r.caseItems(r.word(c.Word).Value, r.apart(c), variable(c.Word))
	case *syntax.DeclClause:
		s := Simple{At: r.o.span(c.Pos(), c.End()), Guarded: guarded}
		flags := ""
		for _, a := range c.Args {
			if a.Name == nil && a.Value != nil && strings.HasPrefix(a.Value.Lit(), "-") && c.Variant.Value != "export" {
				flags += a.Value.Lit()
				if strings.Contains(flags, "n") { // a name for another
					r.gone = c.Variant.Value
				}
				continue
			}
			if a.Name == nil {
				if c.Variant.Value == "export" && a.Value != nil && !r.exportsNamed(a.Value, &s) && !r.exportsFile(a.Value) {
					r.gone = c.Variant.Value // of a name that is made
				}
				continue
			}
			if a.Array != nil {
				r.array(a)
				continue
			}
			name := a.Name.Value
			if c.Variant.Value == "export" {
				if r.exported == nil {
					r.exported = map[string]bool{}
				}
				r.exported[name] = true
			}
			if a.Value != nil {
				v := r.word(a.Value).Value
				if t, ok := r.known(v); strings.Contains(flags, "i") && (!ok || strings.Trim(t, "0123456789") != "") { // it is worked out
					v = value.NotKnown("a computed number", v.At)
				}
				r.set(name, v)
				r.holds(name, a.Value)
			}
			if r.vars[name] != nil {
				s.Env = append(s.Env, Assign{Name: name, Value: r.passed(name), At: r.o.span(a.Pos(), a.End())})
			} else if r.gone != "" && c.Variant.Value == "export" && (r.with == nil || !has(*r.with, name)) { // it may have been set there
				at := r.o.span(a.Pos(), a.End())
				s.Env = append(s.Env, Assign{Name: name, Value: value.NotKnown("what "+r.gone+" sets", at), At: at})
			}
		}
		r.list = append(r.list, s)
	case *syntax.TimeClause:
		r.stmt(c.Stmt, guarded)
	}
}

// called is the function of the script that a word stands for, with the words that
// it is given before the others; an empty name where it is none.
func (r *lineReader) called(words []*syntax.Word) (name string, before []Word, rest []*syntax.Word) {
	list := r.words(words[:1])
	if len(list) == 0 || !whole(words[0]) && len(list) > 1 {
		return "", nil, nil
	}
	text := list[0].Text
	switch {
	case list[0].Literal():
	case r.with != nil && list[0].Value != nil:
		o := list[0].Value.Under(*r.with)
		if o.Kind != value.Str {
			return "", nil, nil
		}
		text = o.Text
	default:
		return "", nil, nil
	}
	if _, ok := r.funcs[text]; !ok {
		return "", nil, nil
	}
	return text, list[1:], words[1:]
}

// variable is the name of the variable that a word is; empty for any other.
func variable(w *syntax.Word) string {
	if w == nil || len(w.Parts) != 1 {
		return ""
	}
	part := w.Parts[0]
	if q, ok := part.(*syntax.DblQuoted); ok && len(q.Parts) == 1 {
		part = q.Parts[0]
	}
	p, ok := part.(*syntax.ParamExp)
	if !ok || p.Param == nil || p.Exp != nil || p.Slice != nil || p.Index != nil || p.Repl != nil || p.Length || p.Excl || !syntax.ValidName(p.Param.Value) {
		return ""
	}
	return p.Param.Value
}

// apart gives each pattern of a case a branch of its own where the branch runs what the
// variable names.
func (r *lineReader) apart(c *syntax.CaseClause) []*syntax.CaseItem {
	name := variable(c.Word)
	if name == "" || len(r.funcs) == 0 {
		return c.Items
	}
	var list []*syntax.CaseItem
	for _, i := range c.Items {
		runs := slices.ContainsFunc(i.Stmts, func(s *syntax.Stmt) bool {
			call, ok := s.Cmd.(*syntax.CallExpr)
			return ok && len(call.Args) > 0 && variable(call.Args[0]) == name
		})
		if !runs || len(i.Patterns) < 2 || len(i.Patterns) > 16 {
			list = append(list, i)
			continue
		}
		for _, p := range i.Patterns {
			one := *i
			one.Patterns = []*syntax.Word{p}
			list = append(list, &one)
		}
	}
	return list
}

// settings are files that scripts take in for the programs that they set up, not for
// variables of the application.
var settings = map[string]bool{"activate": true, "nvm.sh": true, "rvm": true, "env": true, "profile": true, ".profile": true, ".bashrc": true, ".bash_profile": true, ".asdf": true, "asdf.sh": true, "chruby.sh": true}

// words are the words of a command, with the arguments of the script and lists in
// their places.
func (r *lineReader) words(args []*syntax.Word) (list []Word) {
	for _, w := range args {
		if r.given && len(r.args) > 0 && whole(w) {
			list = append(list, r.args...)
			continue
		}
		if more, ok := r.elements(w); ok {
			list = append(list, more...)
			continue
		}
		word := r.word(w)
		if parts, ok := r.fields(word); ok {
			list = append(list, parts...)
			continue
		}
		list = append(list, word.spread()...)
	}
	return list
}

// fields are the words that one without quotes falls into where the script says at which
// signs: IFS (POSIX.1-2024, "2.6.5 Field Splitting").
func (r *lineReader) fields(w Word) (list []Word, ok bool) {
	apart, set := r.vars["IFS"]
	if !set || !w.Split || r.absent["IFS"] {
		return nil, false
	}
	signs, known := r.known(apart)
	text, sure := r.known(w.Value)
	if !known || !sure {
		w.Value = value.NotKnown("words that IFS takes apart", w.At)
		return []Word{w}, true
	}
	for _, t := range strings.FieldsFunc(text, func(c rune) bool { return strings.ContainsRune(signs, c) }) {
		list = append(list, Word{Value: value.Text(t, w.At), Text: t, At: w.At, Bare: true})
	}
	return list, true
}

func (r *lineReader) word(w *syntax.Word) Word {
	at := r.o.span(w.Pos(), w.End())
	v, bare, single := r.parts(w.Parts, at)
	var b strings.Builder
	if v.Kind == value.Str {
		b.WriteString(v.Text)
	} else {
		_ = syntax.NewPrinter().Print(&b, w)
	}
	split := false
	for _, p := range w.Parts {
		switch p := p.(type) {
		case *syntax.ParamExp, *syntax.CmdSubst:
			split = bare
		case *syntax.Lit:
			bare = bare && !strings.Contains(p.Value, `\ `)
		}
	}
	return Word{Value: v, Text: b.String(), At: at, Bare: bare, Single: single, Split: split}
}

func (r *lineReader) parts(parts []syntax.WordPart, at place.Span) (v *value.Value, bare, single bool) {
	var list []*value.Value
	bare = true
	for _, p := range parts {
		switch p := p.(type) {
		case *syntax.Lit:
			list = append(list, value.Text(unescape(p.Value), at))
		case *syntax.SglQuoted:
			bare, single = false, true
			text := p.Value
			if p.Dollar { // $'a\n'
				text = strings.NewReplacer(`\\`, `\`, `\n`, "\n", `\t`, "\t", `\r`, "\r", `\'`, `'`, `\"`, `"`, `\e`, "\x1b").Replace(text)
			}
			list = append(list, value.Text(text, at))
		case *syntax.DblQuoted:
			bare = false
			v, _, _ := r.parts(p.Parts, at)
			list = append(list, v)
		case *syntax.ParamExp:
			if f, ok := r.folderOf(p); ok {
				list = append(list, value.Text(f, at))
				continue
			}
			list = append(list, r.param(p, at))
		case *syntax.ArithmExp:
			list = append(list, r.reckoned(p.X, at))
		case *syntax.CmdSubst:
			if f, ok := r.folderOf(p); ok {
				list = append(list, value.Text(f, at))
				continue
			}
			list = append(list, r.substituted(p.Stmts, at))
		default:
			list = append(list, value.NotKnown("what a command prints", at))
		}
	}
	if len(list) == 0 {
		return value.Text("", at), bare, single
	}
	v = value.Concat(list...)
	if n := 0; large(v, &n) {
		v = value.NotKnown("a text that is too long to be followed", at)
	}
	return v, bare, single
}

func unescape(s string) string {
	if !strings.Contains(s, `\`) {
		return s
	}
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] == '\\' && i+1 < len(s) {
			i++
			if s[i] == '\n' {
				continue
			}
		}
		b.WriteByte(s[i])
	}
	return b.String()
}

// param reads $X, ${X}, ${X:-y}, ${X-y}, ${X:=y} and ${X:?}.
func (r *lineReader) param(p *syntax.ParamExp, at place.Span) *value.Value {
	at = r.o.span(p.Pos(), p.End())
	name := p.Param.Value
	if p.Excl { // the variable that another names (GNU Bash 5.3, "Shell Parameter Expansion")
		of := r.vars[name]
		if a := r.argument(name, at); of == nil && a != nil {
			of = a
		}
		text, ok := r.known(of)
		if !ok || !syntax.ValidName(text) {
			return value.NotKnown("a variable that is named while the script runs", at)
		}
		q := *p
		lit := *p.Param
		lit.Value = text
		q.Excl, q.Param = false, &lit
		p, name = &q, text
	}
	var v *value.Value
	if set, ok := r.vars[name]; ok {
		v = set
	} else if a := r.argument(name, at); a != nil {
		v = a
	} else if name == "" || strings.ContainsAny(name[:1], "0123456789@*#?$!-") {
		return value.NotKnown("the arguments of a script", at)
	} else if v = value.Variable(name, value.ReadsEmpty, at); r.gone != "" && (r.with == nil || !has(*r.with, name)) {
		v = value.NotKnown("what "+r.gone+" sets", at)
	} else if r.strict && p.Exp == nil && !provided[name] && p.Index == nil { // set -u
		w := *v
		w.Unset = value.Raises
		v = &w
	}
	if p.Index != nil {
		if w, ok := p.Index.(*syntax.Word); ok && p.Length && (w.Lit() == "@" || w.Lit() == "*") && r.arrays[name] != nil { // they are counted, not their letters
			return value.Text(strconv.Itoa(len(r.arrays[name])), at)
		}
		if v = r.element(p, at); v == nil {
			return value.NotKnown("a part of $"+name, at)
		}
	}
	if x := r.part(p, v, at); x != nil {
		return x
	}
	if p.Exp == nil {
		if p.Length || p.Repl != nil || p.Slice != nil {
			return value.NotKnown("a part of $"+name, at)
		}
		return v
	}
	def := value.Text("", at)
	if p.Exp.Word != nil {
		def, _, _ = r.parts(p.Exp.Word.Parts, at)
	}
	switch p.Exp.Op {
	case syntax.DefaultUnsetOrNull, syntax.AssignUnsetOrNull:
		u := value.Or(v, def, at)
		if p.Exp.Op == syntax.AssignUnsetOrNull {
			r.set(name, u)
		}
		return u
	case syntax.DefaultUnset, syntax.AssignUnset:
		if r.absent[name] {
			if p.Exp.Op == syntax.AssignUnset {
				r.set(name, def)
			}
			return def
		}
		u := value.Or(v, def, at)
		u.Text = "unset"
		if p.Exp.Op == syntax.AssignUnset {
			r.set(name, u)
		}
		return u
	case syntax.ErrorUnset:
		w := *v
		w.Unset = value.Raises
		return &w
	case syntax.ErrorUnsetOrNull:
		return value.Or(v, value.Variable(nobody, value.Raises, at), at)
	}
	return value.NotKnown("a part of $"+name, at)
}

// provided are variables that a shell has, or that hosts set for every process (POSIX.1-2024,
// "2.5.3 Shell Variables", "8.3 Other Environment Variables"; GNU Bash 5.3 manual, "Bash
// Variables").
var provided = map[string]bool{"HOME": true, "PATH": true, "PWD": true, "OLDPWD": true, "USER": true, "LOGNAME": true, "SHELL": true, "HOSTNAME": true, "HOSTTYPE": true, "OSTYPE": true, "MACHTYPE": true, "UID": true, "EUID": true, "PPID": true,
	"IFS": true, "SHLVL": true, "LANG": true, "TERM": true, "RANDOM": true, "SECONDS": true, "LINENO": true, "BASH_SOURCE": true, "BASH_VERSION": true, "FUNCNAME": true, "BASH": true, "OPTARG": true, "OPTIND": true, "REPLY": true, "PS1": true, "PS4": true, "EPOCHSECONDS": true, "BASHPID": true, "PIPESTATUS": true, "BASH_REMATCH": true, "GROUPS": true, "TMPDIR": true}

func has(env value.Environ, name string) bool {
	_, ok := env.Set[name]
	return ok
}

// element is ${NAME[n]}; nil where it is not known.
func (r *lineReader) element(p *syntax.ParamExp, at place.Span) *value.Value {
	list := r.arrays[p.Param.Value]
	w, ok := p.Index.(*syntax.Word)
	if t := r.tables[p.Param.Value]; ok && t != nil {
		k, ok := r.known(r.word(w).Value)
		if !ok {
			return nil
		}
		if v := t[k]; v != nil {
			return v
		}
		return value.Text("", at)
	}
	if !ok || list == nil {
		return nil
	}
	text := w.Lit()
	if index := r.word(w).Value; text == "" && index.Kind == value.Str {
		text = index.Text
	} else if text == "" && r.with != nil {
		if o := index.Under(*r.with); o.Kind == value.Str {
			text = o.Text
		}
	}
	n, err := strconv.Atoi(text)
	if err == nil && n < 0 { // from the end
		n += len(list)
	}
	if err != nil || n < 0 {
		return nil
	}
	if n >= len(list) {
		return value.Text("", at)
	}
	return list[n].Value
}

// arithmetic reads what stands in $((…)); nil where that is not followed
// (POSIX.1-2024, "2.6.4 Arithmetic Expansion").
func (r *lineReader) arithmetic(x syntax.ArithmExpr, at place.Span) *value.Value {
	switch x := x.(type) {
	case *syntax.ParenArithm:
		return r.arithmetic(x.X, at)
	case *syntax.Word:
		text := x.Lit()
		if text == "" || strings.Trim(text, "0123456789") == "" && text[0] != '0' {
			v, _, _ := r.parts(x.Parts, at)
			return v
		}
		if !syntax.ValidName(text) {
			if n, ok := number(text); ok {
				return value.Text(strconv.Itoa(n), at)
			}
			return nil
		}
		if set, ok := r.vars[text]; ok {
			return set
		}
		return value.Variable(text, value.ReadsEmpty, at)
	case *syntax.BinaryArithm:
		name := map[syntax.BinAritOperator]string{syntax.Add: "+", syntax.Sub: "-", syntax.Mul: "*", syntax.Quo: "/", syntax.Rem: "%"}[x.Op]
		a, b := r.arithmetic(x.X, at), r.arithmetic(x.Y, at)
		if name == "" || a == nil || b == nil {
			return nil
		}
		return value.Arithmetic(name, a, b, at)
	}
	return nil
}

// Base is the name of a program without its folder.
func Base(s string) string { return path.Base(s) }
