package trace

import (
	"regexp"
	"slices"
	"strings"
)

// The parser of command lines of Python (Python 3.14, "argparse"): what the program
// tells it to expect, and what it makes of the words that the start command gives.

// argParser is a parser, or a command of one.
type argParser struct {
	args     []*argAction
	defaults *object // what set_defaults names besides
	subs     *argCommands
	whole    bool   // options are not abbreviated
	odd      string // what it was told that is not followed
	all      any    // the default of all
	hasAll   bool
	helps    bool
	env      bool    // what is not given may come from variables (ConfigArgParse)
	prefix   *string // all of them have variables, which begin with it
}

type argAction struct {
	flags    []string // none: it is told by its place
	dest     string
	action   string
	nargs    any
	constant any
	def      any
	typ      any
	choices  any
	required bool
	absent   bool // nothing is set where it is not given
	variable string
}

type argCommands struct {
	dest     string
	required bool
	names    []string
	parsers  map[string]*argParser
}

const maxArgs = 96

// argSuppressed reports whether a value is argparse.SUPPRESS.
func argSuppressed(v any) bool {
	o, ok := v.(*opaque)
	return ok && strings.HasSuffix(o.path, "argparse.SUPPRESS")
}

// newArgParser is what ArgumentParser, or add_parser, makes of its arguments.
func (m *machine) newArgParser(keys map[string]any) (*object, *argParser) {
	p := &argParser{defaults: newObject(), helps: true}
	for k, v := range keys {
		switch k {
		case "allow_abbrev":
			p.whole = v == false
		case "add_help":
			p.helps = v != false
		case "argument_default":
			p.all, p.hasAll = v, true
		case "parents":
			l, ok := v.(*list)
			if !ok {
				p.odd = "the parents of a parser"
				continue
			}
			for _, x := range l.items {
				o, ok := x.(*object)
				if !ok || o.parser == nil {
					p.odd = "the parents of a parser"
					continue
				}
				p.args = append(p.args, o.parser.args...)
				for _, k := range o.parser.defaults.keys {
					p.defaults.set(k, o.parser.defaults.cells[k].v)
				}
			}
		case "prefix_chars", "fromfile_prefix_chars", "conflict_handler", "exit_on_error":
			p.odd = "a parser with " + k
		}
	}
	return m.argObject(p), p
}

// argObject is the object that the program sees of a parser.
func (m *machine) argObject(p *argParser) *object {
	o := newObject()
	o.parser = p
	o.class = &class{name: "ArgumentParser", builtin: true, methods: newObject(), statics: newObject()}
	method := func(name string, do func(m *machine, args []any, keys map[string]any, at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(m *machine, _ any, args []any, keys map[string]any, at spot) (any, error) {
			return do(m, args, keys, at)
		}})
	}
	method("add_argument", func(m *machine, args []any, keys map[string]any, _ spot) (any, error) {
		a := p.add(args, keys)
		back := newObject()
		back.class = &class{name: "Action", builtin: true, methods: newObject(), statics: newObject()}
		if a != nil {
			back.set("dest", a.dest)
		}
		return back, nil
	})
	for _, name := range []string{"add_argument_group", "add_mutually_exclusive_group"} {
		method(name, func(*machine, []any, map[string]any, spot) (any, error) { return o, nil })
	}
	method("set_defaults", func(_ *machine, _ []any, keys map[string]any, _ spot) (any, error) {
		for _, k := range sortedKeys(keys) {
			p.defaults.set(k, keys[k])
			for _, a := range p.args {
				if a.dest == k {
					a.def, a.absent = keys[k], false
				}
			}
		}
		return nil, nil
	})
	method("get_default", func(_ *machine, args []any, _ map[string]any, _ spot) (any, error) {
		name, _ := first(args).(string)
		for _, a := range p.args {
			if a.dest == name && a.def != nil {
				return a.def, nil
			}
		}
		v, _ := p.defaults.get(name)
		if v == any(undefined) {
			v = nil
		}
		return v, nil
	})
	method("add_subparsers", func(m *machine, _ []any, keys map[string]any, _ spot) (any, error) {
		p.subs = &argCommands{parsers: map[string]*argParser{}, required: keys["required"] == true}
		p.subs.dest, _ = keys["dest"].(string)
		of := newObject()
		of.class = &class{name: "_SubParsersAction", builtin: true, methods: newObject(), statics: newObject()}
		of.class.methods.set("add_parser", &function{name: "add_parser", native: func(m *machine, _ any, args []any, keys map[string]any, _ spot) (any, error) {
			back, sub := m.newArgParser(keys)
			name, ok := first(args).(string)
			if !ok {
				p.odd = "a command whose name is not known"
				return back, nil
			}
			names := []string{name}
			if l, ok := keys["aliases"].(*list); ok {
				for _, x := range l.items {
					names = append(names, show(x))
				}
			}
			for _, n := range names {
				p.subs.names = append(p.subs.names, n)
				p.subs.parsers[n] = sub
			}
			return back, nil
		}})
		return of, nil
	})
	for _, name := range []string{"error", "exit"} {
		method(name, func(*machine, []any, map[string]any, spot) (any, error) { return nil, &exit{} })
	}
	for _, name := range []string{"print_help", "print_usage", "register"} {
		method(name, func(*machine, []any, map[string]any, spot) (any, error) { return nil, nil })
	}
	for _, name := range []string{"format_help", "format_usage"} {
		method(name, func(*machine, []any, map[string]any, spot) (any, error) { return "usage", nil })
	}
	for _, name := range []string{"parse_args", "parse_known_args", "parse_intermixed_args"} {
		method(name, func(m *machine, args []any, keys map[string]any, at spot) (any, error) {
			given := m.argv()[1:]
			from := first(args)
			if v, ok := keys["args"]; ok {
				from = v
			}
			switch l := from.(type) {
			case nil, undef:
			case *list:
				given = slices.Clone(l.items)
			default:
				return nil, undecided("the words that a parser is given")
			}
			var into *object
			if len(args) > 1 {
				into, _ = args[1].(*object)
			}
			if v, ok := keys["namespace"].(*object); ok {
				into = v
			}
			ns, rest, err := m.argParse(p, given, into, at)
			if err != nil {
				return nil, err
			}
			if name == "parse_known_args" {
				l := &list{}
				for _, w := range rest {
					l.items = append(l.items, w)
				}
				return &list{items: []any{ns, l}}, nil
			}
			if len(rest) > 0 {
				return nil, &exit{}
			}
			return ns, nil
		})
	}
	return o
}

// add notes an argument; nil where it is not followed.
func (p *argParser) add(args []any, keys map[string]any) *argAction {
	if len(p.args) >= maxArgs {
		p.odd = "a parser with too many arguments"
		return nil
	}
	a := &argAction{action: "store", nargs: keys["nargs"], constant: keys["const"], def: keys["default"], typ: keys["type"], choices: keys["choices"], required: keys["required"] == true}
	_, hasDefault := keys["default"]
	if !hasDefault && p.hasAll {
		a.def, hasDefault = p.all, true
	}
	for _, x := range args {
		name, ok := x.(string)
		if !ok {
			p.odd = "an argument whose name is not known"
			return nil
		}
		if strings.HasPrefix(name, "-") {
			a.flags = append(a.flags, name)
		} else {
			a.dest = name
		}
	}
	for _, f := range a.flags {
		if a.dest == "" || strings.HasPrefix(f, "--") && !strings.HasPrefix(a.flags[0], "--") && a.dest == strings.ReplaceAll(strings.TrimLeft(a.flags[0], "-"), "-", "_") {
			a.dest = strings.ReplaceAll(strings.TrimLeft(f, "-"), "-", "_")
		}
	}
	if d, ok := keys["dest"].(string); ok {
		a.dest = d
	}
	if a.variable, _ = keys["env_var"].(string); a.variable == "" && p.prefix != nil && len(a.flags) > 0 {
		a.variable = *p.prefix + strings.ToUpper(a.dest)
	}
	if keys["is_config_file"] == true || keys["is_config_file_arg"] == true {
		p.odd = "a file of settings that an argument names"
	}
	switch act := keys["action"].(type) {
	case nil:
	case string:
		a.action = act
	case *opaque:
		if a.action = "odd"; strings.HasSuffix(act.path, "argparse.BooleanOptionalAction") {
			a.action = "boolean"
			for _, f := range slices.Clone(a.flags) {
				if strings.HasPrefix(f, "--") {
					a.flags = append(a.flags, "--no-"+f[2:])
				}
			}
		}
	default:
		a.action = "odd"
	}
	switch a.action {
	case "store_true":
		a.constant = true
		if !hasDefault {
			a.def = false
		}
	case "store_false":
		a.constant = false
		if !hasDefault {
			a.def = true
		}
	case "store", "store_const", "append", "append_const", "count", "extend", "help", "version", "boolean":
	default:
		p.odd = "an action of its own"
		return nil
	}
	if a.absent = argSuppressed(a.def); a.absent {
		a.def = nil
	}
	if v, ok := p.defaults.get(a.dest); ok && !hasDefault {
		a.def = v
	}
	p.args = append(p.args, a)
	return a
}

// takes reports whether an action takes words behind its name.
func (a *argAction) takes() bool {
	switch a.action {
	case "store", "append", "extend":
		return true
	}
	return false
}

// pattern is how many words it takes, over letters that stand for words: A for one, O
// for an option.
func (a *argAction) pattern() string {
	p := "(-*A-*)"
	switch n := a.nargs.(type) {
	case string:
		p = map[string]string{"?": "(-*A?-*)", "*": "(-*[A-]*)", "+": "(-*A[A-]*)", "...": "([-AO]*)"}[n]
	case integer:
		p = "(-*" + strings.Repeat("A", max(0, min(int(n), 64))) + ")"
	}
	if len(a.flags) > 0 {
		p = strings.ReplaceAll(strings.ReplaceAll(p, "-*", ""), "-", "")
	}
	return p
}

// option finds what a word names: the action, the text behind = or behind a short
// name. known is false for a word that looks like an option and is none; dash for one
// that is no option.
func (p *argParser) option(w string) (a *argAction, flag, with string, has, known, dash bool) {
	if w == "" || w[0] != '-' {
		return nil, "", "", false, false, false
	}
	find := func(name string) *argAction {
		for _, a := range p.args {
			if slices.Contains(a.flags, name) {
				return a
			}
		}
		return nil
	}
	if a := find(w); a != nil {
		return a, w, "", false, true, true
	}
	if p.helps && (w == "-h" || w == "--help") {
		return &argAction{action: "help", flags: []string{"-h", "--help"}}, w, "", false, true, true
	}
	if len(w) == 1 {
		return nil, "", "", false, false, false
	}
	name, text, eq := strings.Cut(w, "=")
	if a := find(name); eq && a != nil {
		return a, name, text, true, true, true
	}
	var list []*argAction
	var names, texts []string
	var haves []bool
	also := func(a *argAction, name, text string, has bool) {
		if !slices.Contains(list, a) {
			list, names, texts, haves = append(list, a), append(names, name), append(texts, text), append(haves, has)
		}
	}
	switch {
	case strings.HasPrefix(w, "--"):
		for _, a := range p.args {
			for _, f := range a.flags {
				if !p.whole && strings.HasPrefix(f, name) {
					also(a, f, text, eq)
				}
			}
		}
	default: // -p8000
		for _, a := range p.args {
			for _, f := range a.flags {
				if f == w[:2] {
					also(a, f, w[2:], true)
				} else if !p.whole && strings.HasPrefix(f, w) {
					also(a, f, "", false)
				}
			}
		}
	}
	if len(list) == 1 {
		return list[0], names[0], texts[0], haves[0], true, true
	}
	if len(list) > 1 {
		return nil, w, "", true, true, true // it fits several
	}
	if argNegative.MatchString(w) {
		for _, a := range p.args {
			if slices.ContainsFunc(a.flags, argNegative.MatchString) {
				return nil, w, "", false, false, true
			}
		}
		return nil, "", "", false, false, false
	}
	if strings.Contains(w, " ") {
		return nil, "", "", false, false, false
	}
	return nil, w, "", false, false, true
}

var argNegative = regexp.MustCompile(`^-\d+$|^-\d*\.\d+$`)

// argParse reads words into a namespace; rest are those that nothing takes.
func (m *machine) argParse(p *argParser, given []any, ns *object, at spot) (_ *object, rest []string, err error) {
	if p.odd != "" {
		return nil, nil, giveUp("%s", p.odd)
	}
	if len(given) > maxArgs {
		return nil, nil, giveUp("too many words for a parser")
	}
	var words []string
	for _, w := range given {
		t, ok := w.(string)
		if !ok {
			return nil, nil, undecided("a word of the command line")
		}
		words = append(words, t)
	}
	if p.env {
		if words, err = m.argVariables(p, words); err != nil {
			return nil, nil, err
		}
	}
	if ns == nil {
		ns = newObject()
		ns.class = &class{name: "Namespace", builtin: true, methods: newObject(), statics: newObject()}
	}
	for _, a := range p.args {
		if _, set := ns.get(a.dest); !set && !a.absent && a.action != "help" && a.action != "version" {
			ns.set(a.dest, a.def)
		}
	}
	if p.subs != nil && p.subs.dest != "" {
		if _, set := ns.get(p.subs.dest); !set {
			ns.set(p.subs.dest, nil)
		}
	}
	for _, k := range p.defaults.keys {
		if _, set := ns.get(k); !set {
			ns.set(k, p.defaults.cells[k].v)
		}
	}
	seen := map[*argAction]bool{}
	var letters strings.Builder
	over := false
	for _, w := range words {
		switch {
		case over:
			letters.WriteByte('A')
		case w == "--":
			letters.WriteByte('-')
			over = true
		default:
			if _, _, _, _, _, dash := p.option(w); dash {
				letters.WriteByte('O')
			} else {
				letters.WriteByte('A')
			}
		}
	}
	line := letters.String()
	var placed []*argAction // those that are told by their place
	for _, a := range p.args {
		if len(a.flags) == 0 {
			placed = append(placed, a)
		}
	}
	command := p.subs
	if command != nil {
		placed = append(placed, nil)
	}
	form := func(a *argAction) string {
		if a == nil {
			return "(-*A[-AO]*)"
		}
		return a.pattern()
	}
	texts := func(list []string, keep bool) []string {
		if i := slices.Index(list, "--"); i >= 0 && !keep {
			return slices.Delete(slices.Clone(list), i, i+1)
		}
		return list
	}
	take := func(a *argAction, list []string) error {
		if a == nil {
			list = texts(list, false)
			sub := command.parsers[list[0]]
			if sub == nil {
				return &exit{}
			}
			if command.dest != "" {
				ns.set(command.dest, list[0])
			}
			var more []any
			for _, w := range list[1:] {
				more = append(more, w)
			}
			inner, left, err := m.argParse(sub, more, nil, at)
			if err != nil {
				return err
			}
			for _, k := range inner.keys {
				ns.set(k, inner.cells[k].v)
			}
			rest = append(rest, left...)
			command = nil
			return nil
		}
		seen[a] = true
		return m.argTake(ns, a, texts(list, a.nargs == "..."), at)
	}
	byPlace := func(i int) (int, error) {
		for n := len(placed); n > 0; n-- {
			var re strings.Builder
			re.WriteString("^")
			for _, a := range placed[:n] {
				re.WriteString(form(a))
			}
			if err := m.use(re.Len() * 64); err != nil { // hostile programs parse again and again
				return i, err
			}
			r, err := regexp.Compile(re.String())
			if err != nil {
				return i, giveUp("a parser with too many arguments")
			}
			loc := r.FindStringSubmatchIndex(line[i:])
			if loc == nil {
				continue
			}
			start := i
			now := placed[:n]
			placed = placed[n:]
			for k, a := range now {
				from, to := start+loc[2+2*k], start+loc[3+2*k]
				if a != nil && to == from && a.nargs != "?" && a.nargs != "*" && a.nargs != "..." {
					continue
				}
				if err := take(a, words[from:to]); err != nil {
					return i, err
				}
				i = to
			}
			return i, nil
		}
		return i, nil
	}
	for i := 0; i < len(words); {
		next := strings.IndexByte(line[i:], 'O')
		if next != 0 {
			j, err := byPlace(i)
			if err != nil {
				return nil, nil, err
			}
			if j > i {
				i = j
				continue
			}
		}
		if next < 0 {
			rest = append(rest, words[i:]...)
			break
		}
		rest = append(rest, words[i:i+next]...)
		i += next
		a, flag, with, has, known, _ := p.option(words[i])
		switch {
		case !known:
			rest = append(rest, words[i])
			i++
			continue
		case a == nil: // it fits several
			return nil, nil, &exit{}
		}
		for has && !a.takes() && !strings.HasPrefix(flag, "--") && with != "" { // -vp8000
			seen[a] = true
			if err := m.argFlag(ns, a, flag); err != nil {
				return nil, nil, err
			}
			flag = "-" + with[:1]
			with = with[1:]
			b, _, _, _, ok, _ := p.option(flag)
			if !ok || b == nil {
				return nil, nil, &exit{}
			}
			if a = b; with == "" {
				has = false
			}
			with = strings.TrimPrefix(with, "=")
		}
		seen[a] = true
		if has && a.takes() {
			if n, counted := a.nargs.(integer); counted && n != 1 {
				return nil, nil, &exit{}
			}
			if err := m.argTake(ns, a, []string{with}, at); err != nil {
				return nil, nil, err
			}
			i++
			continue
		}
		if !a.takes() {
			if has && with != "" || has && strings.HasPrefix(flag, "--") {
				return nil, nil, &exit{}
			}
			if err := m.argFlag(ns, a, flag); err != nil {
				return nil, nil, err
			}
			i++
			continue
		}
		r, err := regexp.Compile("^" + a.pattern())
		if err != nil {
			return nil, nil, giveUp("a parser with too many arguments")
		}
		loc := r.FindStringIndex(line[i+1:])
		if loc == nil {
			return nil, nil, &exit{}
		}
		if err := m.argTake(ns, a, words[i+1:i+1+loc[1]], at); err != nil {
			return nil, nil, err
		}
		i += 1 + loc[1]
	}
	if len(words) == 0 || len(placed) > 0 {
		if _, err := byPlace(len(words)); err != nil {
			return nil, nil, err
		}
	}
	for _, a := range placed {
		if a != nil && (a.nargs == "?" || a.nargs == "*" || a.nargs == "...") {
			continue
		}
		if a == nil && !command.required {
			continue
		}
		return nil, nil, &exit{}
	}
	for _, a := range p.args {
		if a.required && !seen[a] {
			return nil, nil, &exit{}
		}
		if t, isText := a.def.(string); isText && !seen[a] && a.typ != nil && !a.absent { // a default that is a text is read like one that is given
			if v, _ := ns.get(a.dest); v != any(t) {
				continue
			}
			v, err := m.argValue(a, t, at)
			if err != nil {
				return nil, nil, err
			}
			ns.set(a.dest, v)
		}
	}
	return ns, rest, nil
}

// argVariables puts the options that variables give before the words of the command line
// where that does not give them (ConfigArgParse 1.7, "command line > environment variables").
func (m *machine) argVariables(p *argParser, words []string) ([]string, error) {
	var more []string
	for _, a := range p.args {
		v, set := "", false
		if a.variable != "" && len(a.flags) > 0 {
			v, set = m.env.get(a.variable)
		}
		if !set || slices.ContainsFunc(words, func(w string) bool {
			name, _, _ := strings.Cut(w, "=")
			return slices.Contains(a.flags, name)
		}) {
			continue
		}
		flag := a.flags[len(a.flags)-1]
		switch {
		case a.takes():
			more = append(more, flag+"="+v)
		case a.action == "store_true" || a.action == "store_false":
			switch strings.ToLower(v) {
			case "true", "yes", "1":
				more = append(more, flag)
			case "false", "no", "0":
			default:
				return nil, &exit{}
			}
		default:
			return nil, giveUp("a variable for an option")
		}
	}
	return append(more, words...), nil
}

// argFlag does what an option without words does.
func (m *machine) argFlag(ns *object, a *argAction, flag string) error {
	now, _ := ns.get(a.dest)
	switch a.action {
	case "help", "version":
		return &exit{}
	case "count":
		n, _ := now.(integer)
		ns.set(a.dest, n+1)
	case "boolean":
		ns.set(a.dest, !strings.HasPrefix(flag, "--no-"))
	case "append_const":
		l := &list{}
		if had, ok := now.(*list); ok {
			l.items = slices.Clone(had.items)
		}
		l.items = append(l.items, a.constant)
		ns.set(a.dest, l)
	default:
		ns.set(a.dest, a.constant)
	}
	return nil
}

// argTake does what an argument does with its words.
func (m *machine) argTake(ns *object, a *argAction, words []string, at spot) error {
	var v any
	switch n := a.nargs; {
	case n == nil, n == "?" && len(words) == 1:
		if len(words) != 1 {
			return &exit{}
		}
		x, err := m.argValue(a, words[0], at)
		if err != nil {
			return err
		}
		v = x
	case n == "?":
		v = a.def
		if len(a.flags) > 0 {
			v = a.constant
		}
		if t, ok := v.(string); ok {
			x, err := m.argValue(a, t, at)
			if err != nil {
				return err
			}
			v = x
		}
	case n == "*" && len(words) == 0 && len(a.flags) == 0:
		if v = a.def; v == nil {
			v = &list{}
		}
	default:
		l := &list{}
		for _, w := range words {
			x, err := m.argValue(a, w, at)
			if err != nil {
				return err
			}
			l.items = append(l.items, x)
		}
		v = l
	}
	if a.action == "append" || a.action == "extend" {
		l := &list{}
		if had, ok := first([]any{ns.cells[a.dest].v}).(*list); ok {
			l.items = slices.Clone(had.items)
		}
		if more, ok := v.(*list); ok && a.action == "extend" {
			l.items = append(l.items, more.items...)
		} else {
			l.items = append(l.items, v)
		}
		v = l
	}
	if ns.cells[a.dest] == nil || len(words) > 0 || len(a.flags) > 0 || v != nil {
		ns.set(a.dest, v)
	}
	return nil
}

// argValue is what a word is read as, and whether it is one of those that may be.
func (m *machine) argValue(a *argAction, word string, at spot) (any, error) {
	v := any(word)
	if o, ok := a.typ.(*opaque); ok && o.path == "argparse.FileType()" {
		if mode, _ := first(o.args).(string); word == "-" || mode != "" && mode[0] != 'r' {
			return dontKnow("a file that is given"), nil
		}
		v := m.readFile(word)
		if _, missing := v.(*thrown); missing {
			return nil, &exit{}
		}
		return v, nil
	}
	if a.typ != nil && a.typ != any(undefined) {
		x, err := m.call(a.typ, undefined, []any{word}, nil, at)
		if t, ok := err.(*thrown); ok { // argparse says what it wanted, and ends the program
			if o, isObject := t.v.(*object); isObject && o.class != nil && (comesFrom(o.class.name, "ValueError") || comesFrom(o.class.name, "TypeError") || o.class.name == "ArgumentTypeError") {
				return nil, &exit{}
			}
			if o, outside := t.v.(*opaque); outside && strings.Contains(o.path, "ArgumentTypeError") {
				return nil, &exit{}
			}
		}
		if err != nil {
			return nil, err
		}
		v = x
	}
	if a.choices == nil || a.choices == any(undefined) {
		return v, nil
	}
	list, err := m.items(a.choices, m.topOf(at))
	if err != nil || !known(v) {
		return v, nil
	}
	for _, x := range list {
		if !known(x) {
			return v, nil
		}
		if show(x) == show(v) {
			return v, nil
		}
	}
	return nil, &exit{}
}
