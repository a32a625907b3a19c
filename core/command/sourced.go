package command

import (
	"path"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/place"
	"ubique/core/source"
)

// Files of the tree that a script takes in (POSIX.1-2024, "dot", "test", "cd").

// maxTaken is how many files a script takes in, one in another.
const maxTaken = 8

// inTree gives a file as a path of the tree; ok is false where it is not told.
func (r *lineReader) inTree(w *syntax.Word) (string, bool) {
	if p, ok := r.besideScript(w); ok && r.o.read != nil {
		return p, true
	}
	word := r.word(w)
	if r.o.read == nil || !word.Literal() {
		r.wants = r.wants || r.o.read == nil
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
func (r *lineReader) takes(w *syntax.Word, guarded bool) bool {
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
	r.stmts(f.Stmts, guarded)
	r.o = o
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
	to := args[len(args)-1]
	if word := r.word(to); word.Literal() {
		if p, ok := source.Join(r.o.dir, word.Text); ok && !path.IsAbs(word.Text) {
			r.o.dir = p
		} else {
			r.o.read = nil
		}
		return
	}
	if p, ok := r.besideScript(to); ok {
		r.o.dir = p
		return
	}
	r.o.read = nil
}

// ownFolder reports whether a word gives the folder of the script: $(dirname "$0").
func ownFolder(p syntax.WordPart) bool {
	sub, ok := p.(*syntax.CmdSubst)
	if !ok || len(sub.Stmts) != 1 {
		return false
	}
	c, ok := sub.Stmts[0].Cmd.(*syntax.CallExpr)
	if !ok || len(c.Args) < 2 || c.Args[0].Lit() != "dirname" {
		return false
	}
	own := false
	syntax.Walk(c.Args[len(c.Args)-1], func(n syntax.Node) bool {
		if x, ok := n.(*syntax.ParamExp); ok && x.Param != nil {
			own = x.Param.Value == "0" || x.Param.Value == "BASH_SOURCE"
		}
		return true
	})
	return own
}

// besideScript is a path that begins with the folder of the script, as a path of
// the tree: "$(dirname "$0")/..".
func (r *lineReader) besideScript(w *syntax.Word) (string, bool) {
	parts := w.Parts
	if len(parts) > 0 {
		if q, ok := parts[0].(*syntax.DblQuoted); ok {
			parts = append(q.Parts[:len(q.Parts):len(q.Parts)], parts[1:]...)
		}
	}
	rest := ""
	if len(parts) == 2 {
		if l, ok := parts[1].(*syntax.Lit); ok {
			rest = strings.TrimPrefix(l.Value, "/")
		}
	}
	if len(parts) == 0 || len(parts) > 1 && rest == "" || !ownFolder(parts[0]) {
		return "", false
	}
	p, ok := source.Join(path.Dir(r.o.script), rest)
	return strings.TrimPrefix(p, "./"), ok
}

// exportsAll notes whether all variables are exported from here on.
func (r *lineReader) exportsAll(args []*syntax.Word) {
	for i, w := range args {
		flag := w.Lit()
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
