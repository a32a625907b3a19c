package command

import (
	"path"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// Files of the tree that a script takes in (POSIX.1-2024, "dot", "test", "cd").

// maxTaken is how many files a script takes in, one in another.
const maxTaken = 8

// inTree gives a file as a path of the tree; ok is false where it is not told.
func (r *lineReader) inTree(w *syntax.Word) (string, bool) {
	word := r.word(w)
	if r.o.read == nil {
		r.wants = true
		return "", false
	}
	if word.Value.Kind != value.Str && r.with != nil { // the environment says which
		if o := word.Value.Under(*r.with); o.Kind == value.Str {
			return r.treePath(o.Text)
		}
	}
	if !word.Literal() {
		return "", false
	}
	return r.treePath(word.Text)
}

// treePath gives a path that a script names as one of the tree.
func (r *lineReader) treePath(p string) (string, bool) {
	if p == "" || path.IsAbs(p) {
		return "", false
	}
	return source.Join(r.o.dir, p)
}

// there reports whether a test asks for a file that ships: what is not there now
// may be made before the script runs.
func (r *lineReader) there(op string, w *syntax.Word) bool {
	switch op {
	case "-f", "-e", "-s", "-r":
	default:
		return false
	}
	p, ok := r.inTree(w)
	if !ok {
		return false
	}
	_, ok = r.o.read(p)
	return ok
}

// takes reads a file that the script takes in.
func (r *lineReader) takes(w *syntax.Word, args []*syntax.Word, guarded bool) bool {
	p, ok := r.inTree(w)
	if !ok || r.taken >= maxTaken {
		return false
	}
	text, ok := r.o.read(p)
	if !ok || len(text) > maxLine {
		return false
	}
	f, err := syntax.NewParser(syntax.Variant(syntax.LangBash)).Parse(strings.NewReader(text), "")
	if err != nil {
		return false
	}
	r.taken++
	o := r.o
	r.o.at, r.o.file = place.Whole(p), true
	if own := r.words(args); len(args) > 0 {
		given, had := r.given, r.args
		r.given, r.args = len(own) <= 64, own
		defer func() { r.given, r.args = given, had }()
	}
	r.stmts(f.Stmts, guarded)
	r.o = o
	return true
}

// exportsNamed exports a variable whose name is made: export "$name=$text".
func (r *lineReader) exportsNamed(w *syntax.Word, to *Simple) bool {
	text, ok := r.known(r.word(w).Value)
	name, v, has := strings.Cut(text, "=")
	if !ok || !has || !syntax.ValidName(name) {
		return ok && !has && syntax.ValidName(text)
	}
	if r.exported == nil {
		r.exported = map[string]bool{}
	}
	at := r.o.span(w.Pos(), w.End())
	r.exported[name] = true
	r.set(name, value.Text(v, at))
	to.Env = append(to.Env, Assign{Name: name, Value: r.passed(name), At: at})
	return true
}

// exportsFile reads the variables of a dotenv file that is handed to export:
// export $(grep -v '^#' .env | xargs); false for any other word.
func (r *lineReader) exportsFile(w *syntax.Word) bool {
	var names []*syntax.Word
	splits := false
	syntax.Walk(w, func(n syntax.Node) bool {
		if c, ok := n.(*syntax.CallExpr); ok {
			for i, a := range c.Args {
				splits = splits || i == 0 && a.Lit() == "xargs"
				if base := path.Base(r.word(a).Text); i > 0 && strings.HasPrefix(base, ".env") || strings.HasSuffix(base, ".env") {
					names = append(names, a)
				}
			}
		}
		return true
	})
	if !splits || len(names) != 1 || r.taken >= maxTaken {
		return false
	}
	r.taken++
	p, ok := r.inTree(names[0])
	if !ok {
		return false
	}
	text, ok := r.o.read(p)
	if !ok || len(text) > maxLine {
		return false
	}
	var lines []string
	for line := range strings.Lines(text) {
		if k, _, has := strings.Cut(line, "="); has && syntax.ValidName(strings.TrimSpace(k)) {
			lines = append(lines, "export "+strings.TrimSpace(line))
		} else {
			lines = append(lines, "")
		}
	}
	f, err := syntax.NewParser(syntax.Variant(syntax.LangBash)).Parse(strings.NewReader(strings.Join(lines, "\n")), "")
	if err != nil {
		return false
	}
	o := r.o
	r.o.at, r.o.file = place.Whole(p), true
	r.stmts(f.Stmts, false)
	r.o = o
	return true
}

// changes notes the folder that a script goes to: one that is named, or its own.
func (r *lineReader) changes(args []*syntax.Word) {
	if r.o.read == nil || len(args) == 0 {
		return
	}
	if word := r.word(args[len(args)-1]); word.Literal() {
		if p, ok := source.Join(r.o.dir, word.Text); ok && !path.IsAbs(word.Text) {
			if p != r.o.dir {
				for name := range r.rooted { // their text stands for what it was from there
					r.set(name, value.NotKnown("a path of the script", r.o.at))
				}
			}
			r.o.dir = p
			return
		}
	}
	r.o.read = nil
}

// folder is the folder of the tree that a substitution prints: the one of the script,
// $(dirname "$0"), the one that it stands in, $(pwd), or another, $(cd "$X/.." && pwd)
// (POSIX.1-2024, "dirname", "pwd", "2.5.2 Special Parameters"; GNU coreutils 9.7,
// "readlink" and "realpath").
func (r *lineReader) folder(sub *syntax.CmdSubst) (string, bool) {
	if len(sub.Stmts) != 1 || r.o.read == nil || r.o.script == "" {
		return "", false
	}
	switch c := sub.Stmts[0].Cmd.(type) {
	case *syntax.CallExpr:
		if len(c.Args) == 0 || len(c.Assigns) > 0 {
			return "", false
		}
		switch last := c.Args[len(c.Args)-1]; c.Args[0].Lit() {
		case "pwd":
			return r.o.dir, true
		case "dirname":
			if r.script(last) {
				return path.Dir(r.o.script), true
			}
			p, ok := r.folderWord(last)
			return path.Dir(p), ok && p != ""
		case "realpath", "readlink":
			if len(c.Args) > 1 {
				return r.folderWord(last)
			}
		}
	case *syntax.BinaryCmd:
		if x, ok := c.X.Cmd.(*syntax.CallExpr); ok && c.Op == syntax.AndStmt && len(x.Args) > 1 && x.Args[0].Lit() == "cd" {
			if y, ok := c.Y.Cmd.(*syntax.CallExpr); ok && len(y.Args) > 0 && y.Args[0].Lit() == "pwd" {
				return r.folderWord(x.Args[len(x.Args)-1])
			}
		}
	}
	return "", false
}

// script reports whether a word names the script itself: "$0", "${BASH_SOURCE[0]}", or
// "$(readlink -f "$0")".
func (r *lineReader) script(w *syntax.Word) bool {
	parts := w.Parts
	if len(parts) == 1 {
		if q, ok := parts[0].(*syntax.DblQuoted); ok {
			parts = q.Parts
		}
	}
	if len(parts) != 1 {
		return false
	}
	switch p := parts[0].(type) {
	case *syntax.ParamExp:
		return p.Exp == nil && p.Param != nil && (p.Param.Value == "0" || p.Param.Value == "BASH_SOURCE")
	case *syntax.CmdSubst:
		if len(p.Stmts) == 1 {
			c, ok := p.Stmts[0].Cmd.(*syntax.CallExpr)
			return ok && len(c.Args) > 1 && (c.Args[0].Lit() == "readlink" || c.Args[0].Lit() == "realpath") && r.script(c.Args[len(c.Args)-1])
		}
	}
	return false
}

// folderWord is the folder of the tree that a word names, where it begins with one.
func (r *lineReader) folderWord(w *syntax.Word) (string, bool) {
	if !r.begins(w) {
		return "", false
	}
	word := r.word(w)
	if !word.Literal() {
		return "", false
	}
	return r.treePath(word.Text)
}

// begins reports whether a word begins with a folder of the tree that a substitution or a
// variable gives.
func (r *lineReader) begins(w *syntax.Word) bool {
	parts := w.Parts
	if len(parts) > 0 {
		if q, ok := parts[0].(*syntax.DblQuoted); ok {
			parts = q.Parts
		}
	}
	if len(parts) == 0 {
		return false
	}
	_, ok := r.folderOf(parts[0])
	return ok
}

// folderOf is the folder that a part of a word gives, as a path from the one that the
// script stands in.
func (r *lineReader) folderOf(p syntax.WordPart) (string, bool) {
	if r.o.read == nil || r.o.script == "" {
		return "", false
	}
	to, ok := "", false
	switch p := p.(type) {
	case *syntax.CmdSubst:
		to, ok = r.folder(p)
	case *syntax.ParamExp:
		if p.Exp == nil && p.Index == nil && p.Slice == nil && p.Repl == nil && !p.Length && p.Param != nil {
			to, ok = r.folders[p.Param.Value]
			if _, set := r.vars[p.Param.Value]; p.Param.Value == "PWD" && !set {
				to, ok = r.o.dir, true
			}
		}
		if p.Exp != nil && p.Param != nil && p.Param.Value == "0" && p.Exp.Op == syntax.RemSmallSuffix && p.Exp.Word.Lit() == "/*" {
			to, ok = path.Dir(r.o.script), true // ${0%/*}
		}
	}
	if !ok {
		return "", false
	}
	return fromTo(r.o.dir, to), true
}

// fromTo is the way from one folder of the tree to another.
func fromTo(from, to string) string {
	split := func(p string) []string {
		if p = path.Clean("/" + p); p == "/" {
			return nil
		}
		return strings.Split(p[1:], "/")
	}
	a, b := split(from), split(to)
	for len(a) > 0 && len(b) > 0 && a[0] == b[0] {
		a, b = a[1:], b[1:]
	}
	way := strings.Repeat("../", len(a)) + strings.Join(b, "/")
	if way == "" {
		return "."
	}
	return strings.TrimSuffix(way, "/")
}

// holds notes which folder of the tree a variable holds that is given a word.
func (r *lineReader) holds(name string, w *syntax.Word) {
	if w == nil || !r.begins(w) {
		return
	}
	if r.folders == nil {
		r.folders, r.rooted = map[string]string{}, map[string]bool{}
	}
	if p, ok := r.folderWord(w); ok {
		r.folders[name] = p
		return
	}
	r.rooted[name] = true
}

// exportsAll notes whether all variables are exported from here on.
func (r *lineReader) exportsAll(args []*syntax.Word) {
	for i, w := range args {
		flag := w.Lit()
		if len(flag) > 1 && (flag[0] == '-' || flag[0] == '+') && flag[1] != '-' && (strings.Contains(flag, "u") && flag[1] != 'o' || strings.HasSuffix(flag, "o") && i+1 < len(args) && args[i+1].Lit() == "nounset") && len(r.within) == 0 {
			r.strict = flag[0] == '-'
		}
		long := (flag == "-o" || flag == "+o") && i+1 < len(args) && args[i+1].Lit() == "allexport"
		switch {
		case flag == "" || flag == "--" || flag[0] != '-' && flag[0] != '+':
			return
		case !long && !strings.Contains(flag, "a"):
			continue
		}
		if r.exported == nil {
			r.exported = map[string]bool{}
		}
		r.exported["-a"] = flag[0] == '-'
	}
}
