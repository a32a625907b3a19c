package survey

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// managed puts what the settings of a process manager start in the place of the
// manager's own words (documentation of pm2 6, "Ecosystem File").
func (s *Starter) managed(st *fact.Start, ctx command.Context) {
	f := &st.Final
	if f.Program != "pm2" && f.Program != "pm2-runtime" || f.Reason != "" {
		return
	}
	w, given := f.Target()
	if !given {
		for _, name := range []string{"ecosystem.config.js", "ecosystem.config.cjs", "ecosystem.config.mjs"} {
			if s.Tree.Has(path.Join(f.Dir, name)) {
				w = command.Word{Value: value.Text(name, f.At), Text: name, At: f.At}
			}
		}
	}
	if !w.Literal() {
		return
	}
	file, ok := f.Locate(w.Text, ctx)
	if !ok || !s.Tree.Has(file) {
		return
	}
	prog := NewProgram(s.Tree, s.Runtime.Modules(s.Tree, s.C, f.Dir), s.Cache)
	var all *value.Value
	switch path.Ext(file) {
	case ".json", ".yml", ".yaml":
		if d := prog.Data(file); d != nil {
			all = value.FromDocument(d)
		}
	default:
		if !strings.Contains(path.Base(file), ".config.") {
			return
		}
		g := prog.File(file)
		if g == nil {
			break
		}
		e := value.New(prog, file)
		e.Dir = f.Dir
		all = e.Whole(g)
	}
	f.Settings = file
	app := chosenApp(f, all)
	if app == nil {
		f.Reason = "what the settings of " + f.Program + " in " + file + " start is not known"
		return
	}
	s.manage(f, app, w, ctx)
}

// chosenApp is the one application that the settings start; nil where they
// start several, or are not known.
func chosenApp(f *command.Final, all *value.Value) *value.Value {
	if list := all.Get("apps"); list != nil {
		all = list
	}
	if all == nil || all.Kind != value.List {
		if all != nil && all.Kind == value.Object {
			return all
		}
		return nil
	}
	only, _, _ := f.Flag("--only")
	var app *value.Value
	for _, a := range all.Kids {
		if only.Text != "" && literalOf(a.Get("name")) != only.Text {
			continue
		}
		if app != nil {
			return nil
		}
		app = a
	}
	if app == nil || app.Kind != value.Object {
		return nil
	}
	return app
}

func literalOf(v *value.Value) string {
	if v != nil && v.Kind == value.Str {
		return v.Text
	}
	return ""
}

func (s *Starter) manage(f *command.Final, app *value.Value, file command.Word, ctx command.Context) {
	script := app.Get("script")
	if script == nil || script.Kind != value.Str {
		f.Reason = "what the settings of " + f.Program + " start is not known"
		return
	}
	env := append([]command.Assign(nil), f.Env...)
	which := []string{"env"}
	if w, ok, _ := f.Flag("--env"); ok {
		which = append(which, "env_"+w.Text)
	}
	for _, key := range which {
		set := app.Get(key)
		if set == nil {
			continue
		}
		if set.Kind != value.Object {
			f.Reason = "the variables that the settings of " + f.Program + " set are not known"
			return
		}
		for i, name := range set.Keys {
			env = slices.DeleteFunc(env, func(a command.Assign) bool { return a.Name == name })
			env = append(env, command.Assign{Name: name, Value: &value.Value{Kind: value.Op, Text: "String", At: set.Kids[i].At, Kids: []*value.Value{set.Kids[i]}}, At: set.Kids[i].At})
			if k := set.Kids[i]; k.Kind == value.Str {
				env[len(env)-1].Value = k
			}
		}
	}
	word := func(text string, at place.Span) command.Word {
		return command.Word{Value: value.Text(text, at), Text: text, At: at, Single: true}
	}
	dir := f.Dir
	if cwd := literalOf(app.Get("cwd")); cwd != "" {
		p, ok := f.Locate(cwd, ctx)
		if !ok {
			f.Reason = "the folder " + cwd + " lies outside the tree"
			return
		}
		dir = strings.TrimPrefix(p, "./")
		if dir == "." {
			dir = ""
		}
	}
	words := []command.Word{word(script.Text, script.At)}
	if args := app.Get("args"); args != nil {
		switch args.Kind {
		case value.Str:
			for a := range strings.FieldsSeq(args.Text) {
				words = append(words, word(a, args.At))
			}
		case value.List:
			for _, a := range args.Kids {
				words = append(words, command.Word{Value: a, Text: a.Text, At: a.At, Single: true})
			}
		default:
			words = append(words, command.Word{Value: args, Text: args.Text, At: args.At})
		}
	}
	by := literalOf(app.Get("interpreter"))
	if by == "" {
		by = literalOf(app.Get("exec_interpreter"))
	}
	if by == "" && path.Ext(script.Text) == ".py" {
		by = "python3"
	}
	isNode := by == "node" || by == "" && (code.LanguageOf(script.Text) != 0 || path.Ext(script.Text) == "")
	if isNode && script.Text != "npm" && script.Text != "yarn" && script.Text != "pnpm" {
		rest := slices.DeleteFunc(append([]command.Word(nil), f.Args...), func(w command.Word) bool { return w.At == file.At && w.Text == file.Text })
		f.Args, f.Env, f.Dir = append(rest, words...), env, dir
		return
	}
	if by != "" && by != "none" && by != "node" {
		words = append([]command.Word{word(by, script.At)}, words...)
	}
	ctx.Dir = dir
	g := command.Follow(command.Line{Commands: []command.Simple{{Env: env, Words: words, At: script.At}}, Exec: true}, ctx)
	g.Manager, g.Settings, g.Holds, g.Before, g.Back = f.Manager, f.Settings, f.Holds, append(f.Before, g.Before...), f.Back || g.Back
	g.Wrapped = append(append([]command.Via(nil), f.Wrapped...), append([]command.Via{{Name: f.Program, At: f.At}}, g.Wrapped...)...)
	*f = g
}
