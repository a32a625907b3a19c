package command

import (
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/value"
)

// What a shell reads: lines of files of the tree, and programs that stand in the script
// (POSIX.1-2024, "read", "2.7 Redirection", "2.7.4 Here-Document", "2.6.5 Field Splitting";
// GNU Bash 5.3, "Here Strings").

// maxReadLines is how many lines of a file a loop is read over.
const maxReadLines = 200

// input is what a statement reads from: a text, and the file of the tree that it is of. ok
// is false where it reads from what is not known, or from nothing of its own.
func (r *lineReader) input(list []*syntax.Redirect) (text string, ok bool) {
	for _, d := range list {
		if d.N != nil && d.N.Value != "0" {
			continue
		}
		var w *syntax.Word
		switch d.Op {
		case syntax.RdrIn:
			if q, ok2 := d.Word.Parts[0].(*syntax.ProcSubst); ok2 && len(d.Word.Parts) == 1 && q.Op == syntax.CmdIn {
				if text, ok = r.known(r.substituted(q.Stmts, r.o.span(d.Pos(), d.End()))); !ok {
					return "", false
				}
				text += "\n"
				continue
			}
			p, found := r.inTree(d.Word)
			if !found {
				return "", false
			}
			text, ok = r.o.read(p)
			ok = ok && len(text) <= maxLine
			continue
		case syntax.Hdoc, syntax.DashHdoc:
			w = d.Hdoc
		case syntax.WordHdoc:
			w = d.Word
		default:
			continue
		}
		if w == nil {
			text, ok = "", true
			continue
		}
		v, _, _ := r.parts(w.Parts, r.o.span(d.Pos(), d.End()))
		if o, known := r.known(v); known {
			text, ok = o, true
			if d.Op == syntax.WordHdoc {
				text += "\n"
			} else if d.Op == syntax.DashHdoc {
				lines := strings.Split(text, "\n")
				for i := range lines {
					lines[i] = strings.TrimLeft(lines[i], "\t")
				}
				text = strings.Join(lines, "\n")
			}
		} else {
			return "", false
		}
	}
	return text, ok
}

// known is a text that a value is, in the environment where one is given.
func (r *lineReader) known(v *value.Value) (string, bool) {
	if v == nil {
		return "", false
	}
	if v.Kind == value.Str {
		return v.Text, true
	}
	if r.with != nil {
		if o := v.Under(*r.with); o.Kind == value.Str {
			return o.Text, true
		}
	}
	return "", false
}

// reads gives the variables of read what a line holds.
func (r *lineReader) reads(c *syntax.CallExpr, line string, known bool) {
	apart, own := " \t\n", false
	for _, a := range c.Assigns {
		if a.Name != nil && a.Name.Value == "IFS" {
			apart, own = "", true
			if a.Value != nil {
				if apart, own = r.known(r.word(a.Value).Value); !own {
					known = false
				}
			}
		}
	}
	var names []string
	for i, w := range c.Args[1:] {
		name := w.Lit()
		if strings.HasPrefix(name, "-") && len(names) == 0 {
			if strings.Trim(name, "-r") != "" && name != "-" { // what it reads otherwise is not followed
				known = false
			}
			continue
		}
		if !syntax.ValidName(name) {
			if i > 0 || name != "" {
				continue
			}
		}
		names = append(names, name)
	}
	if len(names) == 0 {
		names = []string{"REPLY"}
	}
	at := r.o.span(c.Pos(), c.End())
	blank := strings.Trim(apart, " \t\n") == "" && apart != ""
	if apart != "" {
		line = strings.Trim(line, strings.Map(func(c rune) rune {
			if strings.ContainsRune(" \t\n", c) && strings.ContainsRune(apart, c) {
				return c
			}
			return -1
		}, apart))
	}
	for i, n := range names {
		v := line
		if end := strings.IndexAny(line, apart); i+1 < len(names) && apart != "" {
			if end < 0 {
				line = ""
			} else {
				v, line = line[:end], line[end+1:]
				if blank {
					line = strings.TrimLeft(line, apart)
				}
			}
		}
		if known {
			r.set(n, value.Text(v, at))
		} else {
			r.set(n, value.NotKnown("what read reads", at))
		}
	}
}

// readsList gives an array the lines of what is read: mapfile -t NAME.
func (r *lineReader) readsList(c *syntax.CallExpr) {
	name, plain := "MAPFILE", false
	for _, w := range c.Args[1:] {
		switch l := w.Lit(); {
		case l == "-t":
			plain = true
		case syntax.ValidName(l):
			name = l
		default:
			plain = false
		}
	}
	if r.arrays == nil {
		r.arrays = map[string][]Word{}
	}
	text, ok := r.input(r.redirs)
	lines := strings.Split(strings.TrimSuffix(text, "\n"), "\n")
	if r.arrays[name] = nil; !ok || !plain || len(lines) > 64 || len(r.within) > 0 {
		return
	}
	at := r.o.span(c.Pos(), c.End())
	list := []Word{}
	for _, l := range lines {
		list = append(list, Word{Value: value.Text(l, at), Text: l, At: at})
	}
	r.arrays[name] = list
}

// evaluates reads the words of eval as a line of their own.
func (r *lineReader) evaluates(args []*syntax.Word, guarded bool) {
	var text []string
	for _, w := range r.words(args) {
		t, ok := r.known(w.Value)
		if !ok {
			r.gone = "eval"
			return
		}
		text = append(text, t)
	}
	line := strings.Join(text, " ")
	f, err := syntax.NewParser(syntax.Variant(syntax.LangBash)).Parse(strings.NewReader(line), "")
	if r.taken++; err != nil || r.taken > maxTaken || len(line) > maxLine {
		r.gone = "eval"
		return
	}
	r.stmts(f.Stmts, guarded)
}

// printers are the programs of which it is known what they print, where they are given texts
// and files of the tree (POSIX.1-2024, "basename", "dirname", "expr", "grep", "head", "sed",
// "tail"; GNU coreutils 9.7, "seq").
var printers = map[string]bool{"basename": true, "dirname": true, "expr": true, "grep": true, "head": true, "tail": true, "sed": true, "seq": true}

// tool is what one of these prints; ok is false where that is not followed.
func (r *lineReader) tool(name string, words []Word) (out string, ok bool) {
	var args []string
	for _, w := range words {
		t, ok := r.known(w.Value)
		if !ok {
			return "", false
		}
		args = append(args, t)
	}
	lines := func(name string) ([]string, bool) {
		p, ok := r.treePath(name)
		if !ok {
			return nil, false
		}
		text, ok := r.o.read(p)
		return strings.Split(strings.TrimSuffix(text, "\n"), "\n"), ok && len(text) <= maxLine
	}
	if len(args) > 0 && args[0] == "--" && (name == "basename" || name == "dirname") {
		args = args[1:]
	}
	switch name {
	case "basename":
		if len(args) == 0 || len(args) > 2 || args[0] == "" || args[0][0] == '-' {
			return "", false
		}
		out = path.Base(args[0])
		if len(args) == 2 && out != args[1] {
			out = strings.TrimSuffix(out, args[1])
		}
		return out, true
	case "dirname":
		if len(args) != 1 || args[0] == "" || args[0][0] == '-' {
			return "", false
		}
		return path.Dir(args[0]), true
	case "expr":
		if len(args) != 3 {
			return "", false
		}
		a, err := strconv.Atoi(args[0])
		b, err2 := strconv.Atoi(args[2])
		op, is := map[string]syntax.BinAritOperator{"+": syntax.Add, "-": syntax.Sub, "*": syntax.Mul, "/": syntax.Quo, "%": syntax.Rem}[args[1]]
		if err != nil || err2 != nil || !is {
			return "", false
		}
		n, ok := calculated(op, a, b)
		return strconv.Itoa(n), ok
	case "seq":
		if len(args) == 2 && args[0] == args[1] {
			_, err := strconv.Atoi(args[0])
			return args[0], err == nil
		}
		return "", false
	case "head", "tail":
		n := 10
		if len(args) == 3 && args[0] == "-n" {
			args = append([]string{"-n" + args[1]}, args[2])
		}
		if len(args) == 2 {
			k, err := strconv.Atoi(strings.TrimPrefix(strings.TrimPrefix(args[0], "-"), "n"))
			if err != nil || args[0][0] != '-' || k < 0 {
				return "", false
			}
			n, args = k, args[1:]
		}
		if len(args) != 1 {
			return "", false
		}
		list, ok := lines(args[0])
		if name == "head" {
			return strings.Join(list[:min(n, len(list))], "\n"), ok
		}
		return strings.Join(list[max(0, len(list)-n):], "\n"), ok
	case "grep":
		inverse := false
		for len(args) > 2 && (args[0] == "-E" || args[0] == "-h" || args[0] == "-v" || args[0] == "-e" || args[0] == "--") {
			inverse = inverse || args[0] == "-v"
			args = args[1:]
		}
		if len(args) != 2 || strings.HasPrefix(args[0], "-") {
			return "", false
		}
		pattern, front := strings.CutPrefix(args[0], "^")
		if strings.ContainsAny(pattern, `.*[]\^$+?(){}|`) || pattern == "" {
			return "", false
		}
		list, ok := lines(args[1])
		var found []string
		for _, l := range list {
			if fits := front && strings.HasPrefix(l, pattern) || !front && strings.Contains(l, pattern); fits != inverse {
				found = append(found, l)
			}
		}
		return strings.Join(found, "\n"), ok
	case "sed": // -n 's/^TEXT//p' FILE
		if len(args) != 3 || args[0] != "-n" {
			return "", false
		}
		text, ok := strings.CutPrefix(args[1], "s/^")
		text, ok2 := strings.CutSuffix(text, "//p")
		if !ok || !ok2 || strings.ContainsAny(text, `.*[]\^$+?(){}|/&`) || text == "" {
			return "", false
		}
		list, ok := lines(args[2])
		var found []string
		for _, l := range list {
			if rest, fits := strings.CutPrefix(l, text); fits {
				found = append(found, rest)
			}
		}
		return strings.Join(found, "\n"), ok
	}
	return "", false
}

// inShell reads what a shell of its own runs: what that sets is not set here (POSIX.1-2024,
// "2.12 Shell Execution Environment").
func (r *lineReader) inShell(do func()) {
	had := *r
	r.vars, r.exported, r.folders, r.rooted, r.absent = maps.Clone(r.vars), maps.Clone(r.exported), maps.Clone(r.folders), maps.Clone(r.rooted), maps.Clone(r.absent)
	r.arrays, r.tables, r.funcs = maps.Clone(r.arrays), maps.Clone(r.tables), maps.Clone(r.funcs)
	do()
	r.vars, r.exported, r.folders, r.rooted, r.absent, r.arrays, r.tables, r.funcs = had.vars, had.exported, had.folders, had.rooted, had.absent, had.arrays, had.tables, had.funcs
	r.o, r.args, r.given, r.other, r.rest, r.strict, r.gone = had.o, had.args, had.given, had.other, had.rest, had.strict, had.gone
}

// printsTo gives a variable what printf would print: printf -v NAME FORMAT ….
func (r *lineReader) printsTo(c *syntax.CallExpr) {
	name, ok := r.known(r.word(c.Args[2]).Value)
	if !ok || !syntax.ValidName(name) {
		r.gone = "printf"
		return
	}
	at := r.o.span(c.Pos(), c.End())
	format, ok := r.known(r.word(c.Args[3]).Value)
	words := r.words(c.Args[4:])
	var list []*value.Value
	for i := 0; i < len(format) && ok; i++ {
		switch {
		case format[i] == '%' && i+1 < len(format) && format[i+1] == '%':
			i++
			list = append(list, value.Text("%", at))
		case format[i] == '%' && i+1 < len(format) && (format[i+1] == 's' || format[i+1] == 'd'):
			i++
			if len(words) > 0 {
				list, words = append(list, words[0].Value), words[1:]
			}
		case format[i] == '%' || format[i] == '\\':
			ok = false
		default:
			list = append(list, value.Text(format[i:i+1], at))
		}
	}
	if !ok || len(words) > 0 || len(list) == 0 {
		r.set(name, value.NotKnown("what printf prints", at))
		return
	}
	r.set(name, value.Concat(list...))
}

// overLines reads a loop over the lines of a file of the tree: while read … done < FILE;
// false for any other loop.
func (r *lineReader) overLines(c *syntax.WhileClause, redirs []*syntax.Redirect, guarded bool) bool {
	if len(c.Cond) == 0 || c.Until || len(r.within) > 0 {
		return false
	}
	last := c.Cond[len(c.Cond)-1]
	test := last
	ended := false // || [ -n "$line" ]: the line at the end may have no line break
	if b, ok := last.Cmd.(*syntax.BinaryCmd); ok && b.Op == syntax.OrStmt {
		test, ended = b.X, true
	}
	call, ok := test.Cmd.(*syntax.CallExpr)
	if !ok || len(call.Args) == 0 || call.Args[0].Lit() != "read" || test.Negated || len(c.Cond) > 1 {
		return false
	}
	text, ok := r.input(redirs)
	if !ok {
		return false
	}
	lines := strings.SplitAfter(text, "\n")
	if n := len(lines); lines[n-1] == "" || !ended && !strings.HasSuffix(lines[n-1], "\n") {
		lines = lines[:n-1]
	}
	if len(lines) > maxReadLines {
		return false
	}
	for _, line := range lines {
		r.reads(call, strings.TrimSuffix(strings.TrimSuffix(line, "\n"), "\r"), true)
		if !r.turn(c.Do, guarded) {
			break
		}
	}
	return true
}

// overWords reads a loop over words that are known: for f in a b; false for any other.
func (r *lineReader) overWords(c *syntax.ForClause, guarded bool) bool {
	i, ok := c.Loop.(*syntax.WordIter)
	if !ok || i.Name == nil || len(r.within) > 0 || len(i.Items) > 16 {
		return false
	}
	words := r.words(i.Items)
	if len(i.Items) == 0 {
		if words = r.args; !r.given || i.InPos.IsValid() || len(words) > 16 {
			return false
		}
	}
	var list []string
	for _, w := range words {
		text, ok := r.known(w.Value)
		if !ok || strings.ContainsAny(text, "*?[") && w.Bare {
			return false
		}
		list = append(list, text)
	}
	if r.unrolled += len(list); r.unrolled > maxCalls {
		return false
	}
	for _, text := range list {
		r.set(i.Name.Value, value.Text(text, r.o.span(i.Pos(), i.End())))
		if !r.turn(c.Do, guarded) {
			break
		}
	}
	return true
}

// turn reads one turn of a loop; on is false where it leaves the loop.
func (r *lineReader) turn(do []*syntax.Stmt, guarded bool) (on bool) {
	r.loops++
	r.stmts(do, guarded)
	r.loops--
	left := r.leaves
	if left != "return" {
		r.leaves = ""
	}
	return left != "break" && left != "return"
}

// leave notes a break or a continue in a loop whose turns are read one by one.
func (r *lineReader) leave(how string) bool {
	if r.loops == 0 || how != "break" && how != "continue" {
		return false
	}
	if len(r.within) > 0 { // nobody knows whether
		r.gone = "a loop"
		return true
	}
	r.leaves = how
	return true
}

// missing reports whether a test asks for a file of settings that does not ship and that
// nothing in the script makes before.
func (r *lineReader) missing(op string, w *syntax.Word) bool {
	switch op {
	case "-f", "-e", "-s", "-r":
	default:
		return false
	}
	p, ok := r.inTree(w)
	base := path.Base(p)
	if !ok || r.o.image || !strings.HasPrefix(base, ".env") && !strings.HasSuffix(base, ".env") {
		return false
	}
	if _, there := r.o.read(p); there {
		return false
	}
	return !r.redirected && !slices.ContainsFunc(r.list, func(s Simple) bool {
		return slices.ContainsFunc(s.Words, func(w Word) bool { return strings.Contains(w.Text, base) })
	})
}

// stood puts a program that a script hands to an interpreter where that takes one from its
// command line.
func (r *lineReader) stood(words []Word, redirs []*syntax.Redirect) []Word {
	if len(words) == 0 || len(words) > 2 || len(words) == 2 && words[1].Text != "-" {
		return words
	}
	p := Lookup(path.Base(words[0].Text))
	if p == nil || Inlines[p.Name] == "" {
		return words
	}
	var at *syntax.Redirect
	for _, d := range redirs {
		if d.Op == syntax.Hdoc || d.Op == syntax.DashHdoc || d.Op == syntax.WordHdoc {
			at = d
		}
	}
	text, ok := r.input(redirs)
	if at == nil || !ok {
		return words
	}
	span := r.o.span(at.Pos(), at.End())
	if at.Hdoc != nil {
		span = r.o.span(at.Hdoc.Pos(), at.Hdoc.End())
	}
	flag := strings.Fields(Inlines[p.Name])[0]
	return []Word{words[0], {Value: value.Text(flag, words[0].At), Text: flag, At: words[0].At}, {Value: value.Text(text, span), Text: text, At: span, Single: true}}
}
