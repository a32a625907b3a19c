package command

import (
	"maps"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/value"
)

// Expansions of a shell: of parameters, of commands, and the splitting of words
// (POSIX.1-2024, "2.6 Word Expansions"; GNU Bash 5.3 manual, "Shell Parameter
// Expansion").

const maxParts = 1024

// large reports whether a value has too many parts to be gone through: a hostile
// script doubles one forty times over.
func large(v *value.Value, n *int) bool {
	if v == nil {
		return false
	}
	if *n++; *n > maxParts {
		return true
	}
	for _, k := range v.Kids {
		if large(k, n) {
			return true
		}
	}
	return false
}

// settled works a value out where no variable is in it.
func settled(v *value.Value) *value.Value {
	if n := 0; large(v, &n) {
		return value.NotKnown("a text that is too long to be followed", v.At)
	}
	if v.Kind != value.Op || len(v.Variables()) > 0 {
		return v
	}
	if o := v.Under(value.Environ{}); o.Kind == value.Str {
		return value.Text(o.Text, v.At)
	}
	return v
}

// pattern is a word as a pattern: what is quoted in it stands for itself.
func (r *lineReader) pattern(w *syntax.Word) *value.Value {
	at := r.o.span(w.Pos(), w.End())
	quoted := strings.NewReplacer(`\`, `\\`, `*`, `\*`, `?`, `\?`, `[`, `\[`)
	var list []*value.Value
	for _, p := range w.Parts {
		switch p := p.(type) {
		case *syntax.Lit:
			list = append(list, value.Text(p.Value, at))
		case *syntax.SglQuoted:
			list = append(list, value.Text(quoted.Replace(p.Value), at))
		case *syntax.DblQuoted:
			v, _, _ := r.parts(p.Parts, at)
			if v.Kind == value.Str {
				v = value.Text(quoted.Replace(v.Text), at)
			}
			list = append(list, v)
		case *syntax.ParamExp:
			list = append(list, r.param(p, at))
		default:
			return value.NotKnown("a pattern of the script", at)
		}
	}
	return value.Concat(list...)
}

// part is what ${NAME…} takes of a variable, or makes of it; nil where that is not
// followed.
func (r *lineReader) part(p *syntax.ParamExp, v *value.Value, at place.Span) *value.Value {
	text := func(w *syntax.Word) *value.Value {
		if w == nil {
			return value.Text("", at)
		}
		t, _, _ := r.parts(w.Parts, at)
		return t
	}
	pattern := func(w *syntax.Word) *value.Value {
		if w == nil {
			return value.Text("", at)
		}
		return r.pattern(w)
	}
	switch {
	case p.Length:
		return settled(value.Shell("length", at, v))
	case p.Repl != nil:
		name := "/"
		if p.Repl.All {
			name = "//"
		}
		return settled(value.Shell(name, at, v, value.ListOf(at, pattern(p.Repl.Orig), text(p.Repl.With))))
	case p.Slice != nil:
		list := []*value.Value{r.arithmetic(p.Slice.Offset, at)}
		if p.Slice.Length != nil {
			list = append(list, r.arithmetic(p.Slice.Length, at))
		}
		for _, n := range list {
			if n == nil {
				return nil
			}
		}
		return settled(value.Shell(":", at, v, value.ListOf(at, list...)))
	case p.Exp == nil:
		return nil
	}
	switch p.Exp.Op {
	case syntax.RemSmallSuffix, syntax.RemLargeSuffix, syntax.RemSmallPrefix, syntax.RemLargePrefix:
		return settled(value.Shell(p.Exp.Op.String(), at, v, pattern(p.Exp.Word)))
	case syntax.UpperAll, syntax.LowerAll:
		return settled(value.Shell(p.Exp.Op.String(), at, v))
	case syntax.AlternateUnsetOrNull, syntax.AlternateUnset:
		empty := same(v, value.Text("", at))
		if _, set := r.vars[p.Param.Value]; p.Exp.Op == syntax.AlternateUnset {
			empty = value.Not(value.IsSet(p.Param.Value, at))
			if set {
				return text(p.Exp.Word)
			}
		}
		return settled(&value.Value{Kind: value.Cond, Kids: []*value.Value{empty, value.Text("", at), text(p.Exp.Word)}, At: at})
	}
	return nil
}

// printed is the variable that holds what the commands of a substitution have
// printed so far: no script can name it.
const printed = "\x00printed"

const maxSubstituted = 64

// substituted is what commands print that are echo, printf, cat, functions of the
// script, and tests around these; without the line breaks at its end.
func (r *lineReader) substituted(stmts []*syntax.Stmt, at place.Span) *value.Value {
	unknown := value.NotKnown("what a command prints", at)
	if r.substitutions++; len(stmts) == 0 || r.substitutions > maxSubstituted {
		return unknown
	}
	if len(stmts) == 1 && stmts[0].Cmd == nil && len(stmts[0].Redirs) == 1 && stmts[0].Redirs[0].Op == syntax.RdrIn { // $(< FILE)
		if text, ok := r.input(stmts[0].Redirs); ok {
			return value.Text(strings.TrimRight(text, "\n"), at)
		}
		return unknown
	}
	if len(stmts) == 1 {
		if b, ok := stmts[0].Cmd.(*syntax.BinaryCmd); ok && b.Op == syntax.Pipe {
			return r.filtered(b, at)
		}
	}
	vars, list, prints, within := r.vars, len(r.list), r.prints, len(r.within)
	r.vars = maps.Clone(vars)
	r.set(printed, value.Text("", at))
	r.prints, r.lost, r.printing = true, false, within
	r.stmts(stmts, false)
	out := r.vars[printed]
	lost := r.lost
	r.vars, r.list, r.prints, r.lost = vars, r.list[:list], prints, false
	if out == nil || lost {
		return unknown
	}
	return settled(out)
}

// filtered is what cut and tr make of what is printed before them.
func (r *lineReader) filtered(b *syntax.BinaryCmd, at place.Span) *value.Value {
	unknown := value.NotKnown("what a command prints", at)
	call, ok := b.Y.Cmd.(*syntax.CallExpr)
	if !ok || len(call.Args) == 0 {
		return unknown
	}
	in := r.substituted([]*syntax.Stmt{b.X}, at)
	if in.Kind == value.Str && strings.Contains(in.Text, "\n") { // line by line
		return unknown
	}
	var args []string
	for _, w := range call.Args[1:] {
		a := r.word(w)
		if !a.Literal() {
			return unknown
		}
		args = append(args, a.Text)
	}
	line := strings.Join(args, " ")
	switch name := call.Args[0].Lit(); {
	case name == "cut" && (len(args) == 2 || len(args) == 4): // -d: -f1, -d : -f 1
		line = strings.NewReplacer("-d ", "-d", "-f ", "-f").Replace(line)
		d, f, _ := strings.Cut(line, " ")
		if strings.HasPrefix(d, "-f") {
			d, f = f, d
		}
		if len(d) != 3 || !strings.HasPrefix(d, "-d") || d[2] == '\\' || d[2] == ' ' {
			return unknown
		}
		mark := `\` + d[2:]
		switch f {
		case "-f1":
			return settled(value.Shell("%%", at, in, value.Text(mark+"*", at)))
		case "-f2":
			return settled(value.Shell("%%", at, value.Shell("#", at, in, value.Text("*"+mark, at)), value.Text(mark+"*", at)))
		}
	case name == "tr" && len(args) == 2 && args[0] == "-d" && len(args[1]) == 1:
		return settled(value.Shell("//", at, in, value.ListOf(at, value.Text(`\`+args[1], at), value.Text("", at))))
	case name == "tr" && (line == "a-z A-Z" || line == "[:lower:] [:upper:]"):
		return settled(value.Shell("^^", at, in))
	case name == "tr" && (line == "A-Z a-z" || line == "[:upper:] [:lower:]"):
		return settled(value.Shell(",,", at, in))
	}
	return unknown
}

// prints notes what a command prints within a substitution; false where it is none
// that is followed.
func (r *lineReader) print(name string, words []Word, at place.Span) {
	text := func(list []Word) *value.Value {
		var parts []*value.Value
		for i, w := range list {
			if i > 0 {
				parts = append(parts, value.Text(" ", at))
			}
			parts = append(parts, w.Value)
		}
		if len(parts) == 0 {
			return value.Text("", at)
		}
		return value.Concat(parts...)
	}
	var out *value.Value
	r.wants = r.wants || name == "cat" && r.o.read == nil
	switch {
	case name == "echo" && (len(words) == 0 || !strings.HasPrefix(words[0].Text, "-")):
		out = text(words)
	case name == "echo" && words[0].Text == "-n":
		out = text(words[1:])
	case name == "printf" && len(words) == 2 && words[0].Literal() && (words[0].Text == "%s" || words[0].Text == `%s\n` || words[0].Text == "%d" || words[0].Text == `%d\n`):
		out = words[1].Value
	case name == "printf" && len(words) == 1 && words[0].Literal() && !strings.ContainsAny(words[0].Text, `%\`):
		out = words[0].Value
	case name == "cat" && len(words) == 1 && words[0].Literal() && r.o.read != nil:
		if p, ok := r.treePath(words[0].Text); ok {
			if t, ok := r.o.read(p); ok && len(t) <= maxLine {
				out = value.Text(strings.TrimRight(t, "\n"), at)
			}
		}
	case printers[name] && r.o.read != nil:
		if t, ok := r.tool(name, words); ok {
			out = value.Text(strings.TrimRight(t, "\n"), at)
		}
	case name == "return" || name == "exit":
		r.lost = r.lost || len(r.within) > r.printing // what follows may not run
		return
	case name == "true" || name == ":" || name == "local" || name == "test" || name == "[" || name == "shift" || name == "set":
		return
	}
	if had := r.vars[printed]; out == nil || had == nil || had.Kind != value.Str || had.Text != "" {
		out = value.NotKnown("what a command prints", at)
	}
	r.set(printed, out)
}

// pieces are the words that a value without quotes around it falls into at the
// blanks of its own text; a variable in it is taken to be one word. ok is false
// where there is nothing to split.
func pieces(v *value.Value) (list []*value.Value, ok bool) {
	var parts []*value.Value
	var flat func(v *value.Value)
	flat = func(v *value.Value) {
		if v.Kind == value.Op && v.Text == "concat" {
			for _, k := range v.Kids {
				flat(k)
			}
			return
		}
		ok = ok || v.Kind == value.Str && strings.ContainsAny(v.Text, " \t\n")
		parts = append(parts, v)
	}
	flat(v)
	if !ok {
		return nil, false
	}
	var now []*value.Value
	end := func() {
		if len(now) > 0 {
			list = append(list, value.Concat(now...))
		}
		now = nil
	}
	for _, p := range parts {
		if p.Kind != value.Str {
			now = append(now, p)
			continue
		}
		for t := p.Text; t != ""; {
			i := strings.IndexAny(t, " \t\n")
			if i < 0 {
				now = append(now, value.Text(t, p.At))
				break
			}
			if i > 0 {
				now = append(now, value.Text(t[:i], p.At))
			}
			end()
			t = t[i+1:]
		}
	}
	end()
	return list, true
}

// spread are the words that a word without quotes becomes.
func (w Word) spread() []Word {
	list, ok := pieces(w.Value)
	if !w.Split || !ok {
		return []Word{w}
	}
	words := make([]Word, len(list))
	for i, v := range list {
		words[i] = Word{Value: v, Text: opening(v), At: w.At, Bare: true}
	}
	return words
}

// opening is the text of a value, as far as it is known from its front.
func opening(v *value.Value) string {
	switch {
	case v.Kind == value.Str:
		return v.Text
	case v.Kind == value.Op && v.Text == "concat" && len(v.Kids) > 0 && v.Kids[0].Kind == value.Str:
		return v.Kids[0].Text + "…"
	}
	return "…"
}

// spreadUnder are the words of a command as they are in an environment: those
// without quotes are split.
func spreadUnder(words []Word, env *value.Environ) []Word {
	if env == nil {
		return words
	}
	var list []Word
	for _, w := range words {
		if w.Split && w.Value != nil && w.Value.Kind != value.Str {
			o := w.Value.Under(*env)
			if o.Kind == value.Str && strings.ContainsAny(o.Text, " \t\n") {
				w.Value = value.Text(o.Text, w.At)
				list = append(list, w.spread()...)
				continue
			}
			if o.Kind == value.Str && strings.HasPrefix(o.Text, "-") { // a flag, or none
				w.Text = o.Text
				w.Value = value.Text(o.Text, w.At)
			}
		}
		list = append(list, w)
	}
	return list
}

// optionVariables are the variables whose words a program reads before those of its
// command line (Node.js 24, "NODE_OPTIONS"; the java command of JDK 25,
// JDK_JAVA_OPTIONS; JVM Tool Interface 25, JAVA_TOOL_OPTIONS; Ruby 3.4, RUBYOPT).
var optionVariables = map[string][]string{"node": {"NODE_OPTIONS"}, "java": {"JAVA_TOOL_OPTIONS", "JDK_JAVA_OPTIONS"}, "ruby": {"RUBYOPT"}}

// optioned puts the words of these variables in front of the arguments.
func (f Final) optioned(with *value.Environ) Final {
	if f.Known == nil {
		return f
	}
	for _, name := range optionVariables[f.Known.Name] {
		w := Word{At: f.At, Split: true}
		if with != nil && has(*with, name) {
			w.Value = value.Text(with.Set[name], f.At)
		}
		for _, a := range f.Env {
			if a.Name == name && a.Value != nil {
				w.Value, w.At = a.Value, a.At
			}
		}
		if w.Value == nil || w.Value.Kind == value.Str && strings.TrimSpace(w.Value.Text) == "" {
			continue
		}
		w.Text = opening(w.Value)
		f.Args = append(spreadUnder([]Word{w}, with)[0].spread(), f.Args...)
	}
	return f
}
