package command

import (
	"path"
	"slices"
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
	if !ok || i.Name == nil || len(r.within) > 0 || len(i.Items) == 0 || len(i.Items) > 16 {
		return false
	}
	var list []string
	for _, w := range r.words(i.Items) {
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
	r.leaves = ""
	return left != "break"
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
	if !ok || !strings.HasPrefix(base, ".env") && !strings.HasSuffix(base, ".env") {
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
