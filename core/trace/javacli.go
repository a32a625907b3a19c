package trace

import (
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/value"
)

// Libraries of Java that put the words of the command line into fields with annotations:
// picocli (4.7, "picocli - a mighty tiny command line interface") and JCommander (1.83,
// "JCommander").

// jvAnnotated is a field that an annotation gives a meaning on the command line.
type jvAnnotated struct {
	field    string
	typ      string
	names    []string // none: it is told by its place
	place    int
	fallback any // the text of its default; nil: what the field begins with
	required bool
	on       *object
}

// jvMark gives the annotation of a declaration by the last part of its name; nil where
// there is none.
func jvMark(decl *code.Node, names ...string) *code.Node {
	for _, k := range decl.Kids[min(2, len(decl.Kids)):] {
		if k.Is(code.Call) && slices.Contains(names, value.Tail(k.Kid(0).Dotted(), 1)) {
			return k
		}
	}
	return nil
}

// jvMarkArgs are the named arguments of an annotation, and the one without a name as
// "value".
func jvMarkArgs(mark *code.Node) map[string]*code.Node {
	args := map[string]*code.Node{}
	for _, a := range mark.Args() {
		switch {
		case a.Is(code.Keyword):
			args[a.Name] = a.Kid(0)
		case a.Is(code.Assign) && a.Kid(0).Is(code.Name):
			args[a.Kids[0].Name] = a.Kid(1)
		default:
			args["value"] = a
		}
	}
	return args
}

// jvTexts evaluates one text or a list of them.
func (m *machine) jvTexts(n *code.Node, s *scope) (list []string, ok bool) {
	nodes := []*code.Node{n}
	if n.Is(code.Array) || n.Is(code.Block) || n.Is(code.Object) {
		nodes = n.Kids
	}
	for _, k := range nodes {
		if k.Is(code.ExprStmt) {
			k = k.Kid(0)
		}
		v, err := m.eval(k, s)
		t, isText := v.(string)
		if err != nil || !isText {
			return nil, false
		}
		list = append(list, t)
	}
	return list, true
}

// jvAnnotations lists the annotated fields of an object and of those that it mixes in.
func (m *machine) jvAnnotations(o *object, depth int) (list []jvAnnotated, err error) {
	if o.class == nil || o.class.node == nil || depth > 6 {
		return nil, nil
	}
	places := 0
	for _, c := range o.class.line() {
		for _, k := range c.node.Kid(1).Kids {
			if k.Is(code.Func) && jvMark(k, "Option", "Parameters", "Parameter") != nil {
				return nil, giveUp("a method that takes a word of the command line")
			}
			if !k.Is(code.Bind) {
				continue
			}
			if jvMark(k, "Mixin", "ParametersDelegate", "ArgGroup") != nil {
				with, isObject := cellOf(o, k.Kid(0).Name).(*object)
				if !isObject {
					return nil, giveUp("a group of options that is made elsewhere")
				}
				more, err := m.jvAnnotations(with, depth+1)
				if err != nil {
					return nil, err
				}
				list = append(list, more...)
				continue
			}
			mark := jvMark(k, "Option", "Parameters", "Parameter")
			if mark == nil {
				continue
			}
			args := jvMarkArgs(mark)
			a := jvAnnotated{field: k.Kid(0).Name, typ: k.Alias, on: o, place: -1}
			if n := args["names"]; n != nil {
				names, ok := m.jvTexts(n, c.scope)
				if !ok {
					return nil, giveUp("the names of an option")
				}
				a.names = names
			} else {
				a.place = places
				places++
				if n := args["index"]; n != nil {
					t, ok := m.jvTexts(n, c.scope)
					at, err := strconv.Atoi(strings.Join(t, ""))
					if !ok || err != nil {
						return nil, giveUp("the places of parameters")
					}
					a.place = at
				}
			}
			if n := args["defaultValue"]; n != nil {
				t, ok := m.jvTexts(n, c.scope)
				if !ok || len(t) != 1 {
					return nil, giveUp("the default of an option")
				}
				a.fallback = t[0]
			}
			if n := args["required"]; n != nil {
				a.required = n.Is(code.True)
			}
			for _, odd := range []string{"arity", "split", "converter", "listConverter", "parameterConsumer", "password", "help", "usageHelp", "versionHelp", "validateWith", "negatable", "fallbackValue"} {
				if n := args[odd]; n != nil && !(strings.HasSuffix(strings.ToLower(odd), "help") && (len(a.names) > 0)) {
					return nil, giveUp("an option with %s", odd)
				}
			}
			list = append(list, a)
		}
	}
	return list, nil
}

// jvWord is what a field of a type holds of a word; ok is false where the word is none of
// that type.
func jvWord(typ, word string) (v any, ok bool, err error) {
	switch typ {
	case "int", "Integer", "long", "Long", "short", "Short":
		n, bad := strconv.ParseInt(word, 10, 32)
		return integer(n), bad == nil, nil
	case "String", "CharSequence":
		return word, true, nil
	case "boolean", "Boolean":
		return strings.EqualFold(word, "true"), true, nil
	case "double", "Double":
		f, bad := strconv.ParseFloat(word, 64)
		return f, bad == nil, nil
	}
	return nil, false, giveUp("an option of the type %s", typ)
}

// jvInterpolated puts variables into the text of a default (picocli 4.7, "Variable
// Interpolation"); ok is false where one of them has no value.
func (m *machine) jvInterpolated(text string) (string, bool) {
	for range 16 {
		i := strings.Index(text, "${")
		if i < 0 {
			return text, true
		}
		end := strings.IndexByte(text[i:], '}')
		if end < 0 {
			return text, true
		}
		key, spare, has := strings.Cut(text[i+2:i+end], ":-")
		got, set := "", false
		property := func(name string) {
			if v, ok := m.jvSystem()[name].(string); ok {
				got, set = v, true
			}
		}
		switch name, env := strings.CutPrefix(key, "env:"); {
		case env:
			got, set = m.env.get(name)
		case strings.HasPrefix(key, "sys:"):
			property(key[4:])
		default:
			if property(key); !set {
				got, set = m.env.get(key)
			}
		}
		if !set && has {
			got, set = spare, true
		}
		if !set {
			return "", false
		}
		text = text[:i] + got + text[i+end+1:]
	}
	return text, true
}

// jvFill puts the words of a command line into the annotated fields of an object. Rest are
// the words from the first on that stop accepts: the name of a command. Good is false where
// the words do not fit.
func (m *machine) jvFill(o *object, words []string, stop func(string) bool) (rest []string, good bool, err error) {
	list, err := m.jvAnnotations(o, 0)
	if err != nil {
		return nil, false, err
	}
	seen := map[string]bool{}
	set := func(a jvAnnotated, word string) (bool, error) {
		v, ok, err := jvWord(a.typ, word)
		if err != nil || !ok {
			return false, err
		}
		seen[a.field] = true
		a.on.set(a.field, v)
		return true, nil
	}
	for _, a := range list {
		if t, ok := a.fallback.(string); ok {
			if text, has := m.jvInterpolated(t); has {
				if ok, err := set(a, text); err != nil || !ok {
					return nil, false, err
				}
			}
			seen[a.field] = false
		}
	}
	place, plain := 0, false
	for i := 0; i < len(words); i++ {
		w := words[i]
		name, with, has := strings.Cut(w, "=")
		var a *jvAnnotated
		for k := range list {
			switch {
			case plain:
			case slices.Contains(list[k].names, name), !has && slices.Contains(list[k].names, w):
				a = &list[k]
			case a == nil && len(w) > 2 && w[0] == '-' && w[1] != '-' && slices.Contains(list[k].names, w[:2]) && list[k].typ != "boolean": // -p8000
				a, with, has = &list[k], strings.TrimPrefix(w[2:], "="), true
			}
		}
		switch {
		case !plain && w == "--":
			plain = true
			continue
		case a != nil && (a.typ == "boolean" || a.typ == "Boolean") && !has:
			seen[a.field] = true
			now := a.on.cells[a.field]
			a.on.set(a.field, now == nil || now.v != true) // what it is not
			continue
		case a != nil && !has:
			if i++; i >= len(words) {
				return nil, false, nil
			}
			with = words[i]
		case a == nil && stop != nil && stop(w):
			return words[i:], m.jvAll(list, seen), nil
		case a == nil:
			if strings.HasPrefix(w, "-") && !plain {
				return nil, false, nil
			}
			for k := range list {
				if list[k].place == place {
					a = &list[k]
				}
			}
			if a == nil {
				return nil, false, nil
			}
			place++
			with = w
		}
		if ok, err := set(*a, with); err != nil || !ok {
			return nil, false, err
		}
	}
	return nil, m.jvAll(list, seen), nil
}

// jvAll reports whether everything that must be given is.
func (m *machine) jvAll(list []jvAnnotated, seen map[string]bool) bool {
	for _, a := range list {
		if !seen[a.field] && (a.required && a.fallback == nil || a.place >= 0 && a.fallback == nil && len(a.names) == 0) {
			return false
		}
	}
	return true
}

// jvGiven are the words of a command line that a library is given: texts, or a list.
func jvGiven(args []any) (words []string, ok bool) {
	for _, a := range args {
		switch x := a.(type) {
		case string:
			words = append(words, x)
		case *list:
			for _, y := range x.items {
				t, isText := y.(string)
				if !isText {
					return nil, false
				}
				words = append(words, t)
			}
		default:
			return nil, false
		}
	}
	return words, true
}

// jvPicocli is a command line of picocli around an object of the tree.
func (m *machine) jvPicocli(on *object) *object {
	o := jvBuiltin("CommandLine")
	o.set("command", on)
	commands := newObject()
	o.set("commands", commands)
	method := func(name string, do func(m *machine, args []any, at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			return do(m, args, at)
		}})
	}
	for _, name := range []string{"setCaseInsensitiveEnumValuesAllowed", "setUsageHelpWidth", "setColorScheme", "setOut", "setErr", "setExecutionExceptionHandler", "setParameterExceptionHandler", "setExitCodeExceptionMapper", "setPosixClusteredShortOptionsAllowed", "setTrimQuotes", "registerConverter"} {
		method(name, func(*machine, []any, spot) (any, error) { return o, nil })
	}
	method("addSubcommand", func(_ *machine, args []any, _ spot) (any, error) {
		for i, a := range args {
			x, ok := a.(*object)
			if !ok {
				continue
			}
			if x.class != nil && x.class.name == "CommandLine" && x.class.builtin {
				x, _ = x.cells["command"].v.(*object)
			}
			name := ""
			if t, isText := args[0].(string); isText && i > 0 {
				name = t
			} else if name = m.jvCommandName(x); name == "" {
				return nil, giveUp("the name of a command")
			}
			commands.set(name, x)
		}
		return o, nil
	})
	method("parseArgs", func(m *machine, args []any, at spot) (any, error) {
		words, ok := jvGiven(args)
		if !ok {
			return nil, undecided("the words of the command line")
		}
		if _, good, err := m.jvFill(on, words, nil); err != nil {
			return nil, err
		} else if !good {
			return nil, raise("ParameterException", "the words of the command line do not fit")
		}
		return dontKnow("what was parsed"), nil
	})
	method("getCommand", func(*machine, []any, spot) (any, error) { return on, nil })
	method("execute", func(m *machine, args []any, at spot) (any, error) {
		words, ok := jvGiven(args)
		if !ok {
			return nil, undecided("the words of the command line")
		}
		return m.jvExecute(on, commands, words, at, 0)
	})
	return o
}

// jvCommandName is the name that the annotation of a class gives a command.
func (m *machine) jvCommandName(o *object) string {
	if o == nil || o.class == nil || o.class.node == nil {
		return ""
	}
	if mark := jvMark(o.class.node, "Command"); mark != nil {
		if n := jvMarkArgs(mark)["name"]; n != nil {
			if t, ok := m.jvTexts(n, o.class.scope); ok {
				return t[0]
			}
		}
	}
	return ""
}

// jvExecute runs a command of picocli, or the one below it that the words name, and gives
// its exit code.
func (m *machine) jvExecute(on, commands *object, words []string, at spot, depth int) (any, error) {
	if on == nil || on.class == nil || on.class.node == nil || depth > 4 {
		return nil, giveUp("what a command line is for")
	}
	below := map[string]*object{}
	if commands != nil {
		for _, k := range commands.keys {
			below[k], _ = commands.cells[k].v.(*object)
		}
	}
	if mark := jvMark(on.class.node, "Command"); mark != nil {
		if n := jvMarkArgs(mark)["subcommands"]; n != nil {
			nodes := []*code.Node{n}
			if !n.Is(code.Member) {
				nodes = n.Kids
			}
			for _, k := range nodes {
				if k.Is(code.ExprStmt) {
					k = k.Kid(0)
				}
				c, ok := m.jvNamed(strings.TrimSuffix(k.Dotted(), ".class"), on.class.scope).(*class)
				if !ok {
					continue // one of the library: help
				}
				v, err := m.jvMake(c, nil, at)
				if err != nil {
					return nil, err
				}
				x := v.(*object)
				for _, f := range c.node.Kid(1).Kids {
					if f.Is(code.Bind) && jvMark(f, "ParentCommand") != nil {
						x.set(f.Kid(0).Name, on)
					}
				}
				if name := m.jvCommandName(x); name != "" {
					below[name] = x
				}
			}
		}
	}
	for _, w := range words {
		if w == "--help" || w == "--version" {
			return nil, giveUp("a command that is asked for help")
		}
	}
	rest, good, err := m.jvFill(on, words, func(w string) bool { return below[w] != nil })
	if err != nil {
		return nil, err
	}
	if !good {
		return integer(2), nil
	}
	if len(rest) > 0 {
		return m.jvExecute(below[rest[0]], nil, rest[1:], at, depth+1)
	}
	for _, name := range []string{"call", "run"} {
		f := jvChoose(jvMethods(on.class, name, false), nil)
		if f == nil {
			continue
		}
		v, err := m.jvDispatch(f, on, nil, at)
		if err != nil {
			if _, ok := err.(*thrown); ok { // it is shown, and the code is that of a failure
				return integer(1), nil
			}
			return nil, err
		}
		if n, ok := v.(integer); ok && name == "call" {
			return n, nil
		}
		return integer(0), nil
	}
	return integer(2), nil
}

// jvCommander is a parser of JCommander that fills objects of the tree.
func (m *machine) jvCommander(on []any) *object {
	o := jvBuiltin("JCommander")
	method := func(name string, do func(m *machine, args []any, at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			return do(m, args, at)
		}})
	}
	for _, name := range []string{"programName", "build", "setProgramName", "setColumnSize"} {
		method(name, func(*machine, []any, spot) (any, error) { return o, nil })
	}
	method("usage", func(*machine, []any, spot) (any, error) { return nil, nil })
	method("addObject", func(_ *machine, args []any, _ spot) (any, error) {
		on = append(on, args...)
		return o, nil
	})
	method("addCommand", func(*machine, []any, spot) (any, error) { return nil, giveUp("commands of JCommander") })
	parse := func(m *machine, args []any, _ spot) (any, error) {
		words, ok := jvGiven(args)
		if !ok {
			return nil, undecided("the words of the command line")
		}
		if len(on) != 1 {
			return nil, giveUp("several objects for one command line")
		}
		x, ok := on[0].(*object)
		if !ok {
			return nil, giveUp("what a command line is for")
		}
		_, good, err := m.jvFill(x, words, nil)
		if err == nil && !good {
			err = raise("ParameterException", "the words of the command line do not fit")
		}
		return o, err
	}
	method("parse", parse)
	method("args", parse)
	return o
}
