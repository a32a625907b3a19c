package command

import (
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/value"
)

// composer follows a script of composer.json (documentation of Composer 2,
// "Scripts"): composer run-script NAME, or composer NAME alone.
func composer(words []Word, c Context, env []Assign, steps []value.Step, depth int) (Final, bool) {
	rest := words[1:]
	for len(rest) > 0 && strings.HasPrefix(rest[0].Text, "-") {
		rest = rest[1:]
	}
	if len(rest) > 1 && (rest[0].Text == "run" || rest[0].Text == "run-script") {
		rest = rest[1:]
	}
	file := path.Join(c.Dir, "composer.json")
	if len(rest) == 0 || !c.Tree.Has(file) {
		return Final{}, false
	}
	src, err := c.Tree.Document(file)
	if err != nil {
		return Final{}, false
	}
	doc, err := document.JSON(file, src.Data, src.Lines(), false)
	if err != nil {
		return Final{}, false
	}
	line, ok := composerLine(doc, rest[0].Text, map[string]bool{})
	if !ok || len(line.Commands) == 0 {
		return Final{}, false
	}
	args := rest[1:]
	if len(args) > 0 && args[0].Text == "--" {
		args = args[1:]
	}
	last := &line.Commands[len(line.Commands)-1]
	last.Words = append(append([]Word(nil), last.Words...), args...)
	at := doc.Get("scripts", rest[0].Text).At()
	steps = append(steps[:len(steps):len(steps)], value.Step{At: at, Note: "script " + rest[0].Text})
	f := follow(line, c, env, steps, depth+1)
	f.Holds = &Hold{"runner", "composer", words[0].At}
	return f, true
}

// composerLine joins the commands of a script: @php stands for the interpreter,
// @name for another script; what names a method of a class is left out. Each
// script is entered once: what it runs a second time is no other program.
func composerLine(doc *document.Node, name string, entered map[string]bool) (Line, bool) {
	n := doc.Get("scripts", name)
	if n == nil || entered[name] {
		return Line{}, false
	}
	entered[name] = true
	list := []*document.Node{n}
	if n.Kind == document.List {
		list = n.Kids
	}
	var line Line
	for _, k := range list {
		text := strings.TrimSpace(k.Str())
		at := k.At()
		at.Col++
		at.EndCol--
		switch {
		case text == "" || strings.Contains(text, "::") && !strings.ContainsAny(text, " /"):
			continue
		case strings.HasPrefix(text, "@php "):
			text = text[1:]
			at.Col++
		case strings.HasPrefix(text, "@putenv "):
			text = "export " + text[len("@putenv "):]
		case strings.HasPrefix(text, "@"):
			inner, _, _ := strings.Cut(text[1:], " ")
			if l, ok := composerLine(doc, inner, entered); ok {
				line.Commands = append(line.Commands, l.Commands...)
			}
			continue
		}
		l, err := Parse(text, at)
		if err != nil {
			return Line{}, false
		}
		line.Commands = append(line.Commands, l.Commands...)
	}
	return line, true
}
