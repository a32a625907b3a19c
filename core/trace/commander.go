package trace

import (
	"slices"
	"strings"
)

// What the library commander makes of the command line (commander 14, "Options",
// "Commands", "Parsing life cycle and hooks").

// jsCommand is a command; what the program sees of it is obj.
type jsCommand struct {
	obj            *object
	up             *jsCommand
	name           string
	aliases        []string
	options        []*jsOption
	subs           []*jsCommand
	usual          *jsCommand // the one that is taken where none is named
	operands       []string   // its arguments, as they are declared
	defaults       []any      // of its arguments
	action         any
	hooks          []any
	values         map[string]any
	from           map[string]string
	loose, ordered bool // options that are not known are let through; options stand before commands
}

type jsOption struct {
	long, short, key      string
	value, optional, many bool
	negated, must         bool
	def, parse            any
	env                   string
	choices               []any
}

// jsMethods makes an object of functions of this package.
func jsMethods(name string, list map[string]func(m *machine, args []any, at spot) (any, error)) *object {
	o := newObject()
	o.class = &class{name: name, builtin: true, methods: newObject(), statics: newObject()}
	for k, f := range list {
		o.class.methods.set(k, &function{name: k, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			return f(m, args, at)
		}})
	}
	return o
}

// commander makes a command.
func (m *machine) commander(name string, up *jsCommand) *jsCommand {
	c := &jsCommand{name: name, up: up, values: map[string]any{}, from: map[string]string{}}
	self := func(*machine, []any, spot) (any, error) { return c.obj, nil }
	methods := map[string]func(*machine, []any, spot) (any, error){}
	for _, k := range strings.Fields("description summary version usage allowExcessArguments showHelpAfterError showSuggestionAfterError configureHelp configureOutput helpOption helpCommand addHelpCommand addHelpText exitOverride storeOptionsAsProperties passThroughOptions combineFlagAndOptionalValue copyInheritedSettings executableDir on helpGroup") {
		methods[k] = self
	}
	methods["name"] = func(_ *machine, args []any, _ spot) (any, error) {
		if t, ok := first(args).(string); ok {
			c.name = t
			return c.obj, nil
		}
		return c.name, nil
	}
	methods["alias"] = func(_ *machine, args []any, _ spot) (any, error) {
		c.aliases = append(c.aliases, show(first(args)))
		return c.obj, nil
	}
	methods["allowUnknownOption"] = func(_ *machine, args []any, _ spot) (any, error) {
		c.loose = len(args) == 0 || args[0] == true
		return c.obj, nil
	}
	methods["enablePositionalOptions"] = func(*machine, []any, spot) (any, error) {
		c.ordered = true
		return c.obj, nil
	}
	methods["argument"] = func(_ *machine, args []any, _ spot) (any, error) {
		c.operands = append(c.operands, show(first(args)))
		c.defaults = append(c.defaults, at3(args, 2))
		return c.obj, nil
	}
	methods["arguments"] = func(_ *machine, args []any, _ spot) (any, error) {
		for _, w := range strings.Fields(show(first(args))) {
			c.operands, c.defaults = append(c.operands, w), append(c.defaults, undefined)
		}
		return c.obj, nil
	}
	option := func(must bool) func(*machine, []any, spot) (any, error) {
		return func(m *machine, args []any, _ spot) (any, error) {
			flags, ok := first(args).(string)
			if !ok {
				return nil, giveUp("an option of the command line")
			}
			o := optionFlags(flags)
			o.must = must
			switch x := at3(args, 2).(type) {
			case *function:
				o.parse, o.def = x, at3(args, 3)
			case *opaque:
				if len(args) > 3 || jsParsers[x.path] {
					o.parse, o.def = x, at3(args, 3)
				} else {
					o.def = x
				}
			default:
				o.def = x
			}
			c.add(o)
			return c.obj, nil
		}
	}
	methods["option"], methods["requiredOption"] = option(false), option(true)
	methods["addOption"] = func(_ *machine, args []any, _ spot) (any, error) {
		box, ok := first(args).(*object)
		if !ok || box.option == nil {
			return nil, giveUp("an option of the command line")
		}
		c.add(box.option)
		return c.obj, nil
	}
	methods["hook"] = func(_ *machine, args []any, _ spot) (any, error) {
		if show(first(args)) == "preAction" {
			c.hooks = append(c.hooks, at2(args, 1))
		}
		return c.obj, nil
	}
	methods["action"] = func(_ *machine, args []any, _ spot) (any, error) {
		c.action = first(args)
		return c.obj, nil
	}
	methods["command"] = func(m *machine, args []any, _ spot) (any, error) {
		words := strings.Fields(show(first(args)))
		if len(words) == 0 {
			return nil, giveUp("a command of the command line")
		}
		if _, program := at2(args, 1).(string); program { // a program of its own
			return nil, giveUp("a command that is a program of its own")
		}
		sub := m.commander(words[0], c)
		for _, w := range words[1:] {
			sub.operands, sub.defaults = append(sub.operands, w), append(sub.defaults, undefined)
		}
		if o, ok := at2(args, 1).(*object); ok {
			if v, _ := o.get("isDefault"); v == true {
				c.usual = sub
			}
		}
		c.subs = append(c.subs, sub)
		return sub.obj, nil
	}
	methods["addCommand"] = func(m *machine, args []any, _ spot) (any, error) {
		o, ok := first(args).(*object)
		if !ok || o.command == nil {
			return nil, giveUp("a command of the command line")
		}
		o.command.up = c
		if p, ok := at2(args, 1).(*object); ok {
			if v, _ := p.get("isDefault"); v == true {
				c.usual = o.command
			}
		}
		c.subs = append(c.subs, o.command)
		return c.obj, nil
	}
	parse := func(m *machine, args []any, at spot) (any, error) {
		words := m.words(2)
		if l, ok := first(args).(*list); ok {
			words = l.items
			from := ""
			if o, ok := at2(args, 1).(*object); ok {
				v, _ := o.get("from")
				from = show(v)
			}
			if from != "user" {
				words = words[min(2, len(words)):]
			}
		} else if len(args) > 0 && args[0] != any(undefined) {
			return nil, undecided("the arguments of the command line")
		}
		return c.obj, c.dispatch(m, words, at)
	}
	methods["parse"] = parse
	methods["parseAsync"] = func(m *machine, args []any, at spot) (any, error) {
		v, err := parse(m, args, at)
		if t, ok := err.(*thrown); ok {
			return &promise{err: t}, nil
		}
		return &promise{v: v}, err
	}
	methods["opts"] = func(*machine, []any, spot) (any, error) { return c.opts(), nil }
	methods["optsWithGlobals"] = func(*machine, []any, spot) (any, error) {
		o := c.opts()
		for p := c.up; p != nil; p = p.up {
			for _, k := range sortedKeys(p.values) {
				o.set(k, p.values[k])
			}
		}
		return o, nil
	}
	methods["getOptionValue"] = func(_ *machine, args []any, _ spot) (any, error) {
		if v, ok := c.values[show(first(args))]; ok {
			return v, nil
		}
		return undefined, nil
	}
	methods["setOptionValue"] = func(_ *machine, args []any, _ spot) (any, error) {
		c.values[show(first(args))] = at2(args, 1)
		return c.obj, nil
	}
	end := func(*machine, []any, spot) (any, error) { return nil, &exit{} }
	methods["help"], methods["error"] = end, end
	methods["outputHelp"] = func(*machine, []any, spot) (any, error) { return undefined, nil }
	methods["createCommand"] = func(m *machine, args []any, _ spot) (any, error) {
		return m.commander(show(first(args)), nil).obj, nil
	}
	c.obj = jsMethods("Command", methods)
	c.obj.command = c
	c.obj.set("args", &list{})
	return c
}

func at3(args []any, i int) any {
	if i < len(args) {
		return args[i]
	}
	return undefined
}

// jsParsers are functions of the language that options are converted with.
var jsParsers = words("parseInt parseFloat Number String Boolean BigInt Number.parseInt Number.parseFloat JSON.parse")

// optionFlags reads the flags of an option.
func optionFlags(flags string) *jsOption {
	o := &jsOption{def: undefined}
	for _, w := range strings.FieldsFunc(flags, func(r rune) bool { return r == ' ' || r == ',' || r == '|' }) {
		switch {
		case strings.HasPrefix(w, "--"):
			o.long = w
		case strings.HasPrefix(w, "-"):
			o.short = w
		case strings.HasPrefix(w, "<"), strings.HasPrefix(w, "["):
			o.value = true
			o.optional = w[0] == '['
			o.many = strings.Contains(w, "...")
		}
	}
	name := strings.TrimPrefix(o.long, "--")
	if name == "" {
		name = strings.TrimPrefix(o.short, "-")
	}
	if rest, ok := strings.CutPrefix(name, "no-"); ok {
		o.negated, name = true, rest
	}
	parts := strings.Split(name, "-")
	for i := 1; i < len(parts); i++ {
		if parts[i] != "" {
			parts[i] = strings.ToUpper(parts[i][:1]) + parts[i][1:]
		}
	}
	o.key = strings.Join(parts, "")
	return o
}

func (c *jsCommand) add(o *jsOption) {
	c.options = append(c.options, o)
	def := o.def
	if o.negated && def == any(undefined) && !slices.ContainsFunc(c.options, func(x *jsOption) bool { return x.key == o.key && !x.negated }) {
		def = true
	}
	if def != any(undefined) {
		c.values[o.key], c.from[o.key] = def, "default"
	}
}

func (c *jsCommand) opts() *object {
	o := newObject()
	for _, x := range c.options {
		if v, ok := c.values[x.key]; ok {
			o.set(x.key, v)
		}
	}
	for _, k := range sortedKeys(c.values) {
		o.set(k, c.values[k])
	}
	return o
}

// jsOption makes an option in steps: new Option(flags).default(x).env(name).
func (m *machine) jsOption(flags string) *object {
	o := optionFlags(flags)
	var box *object
	set := func(f func(args []any)) func(*machine, []any, spot) (any, error) {
		return func(_ *machine, args []any, _ spot) (any, error) {
			f(args)
			return box, nil
		}
	}
	nothing := set(func([]any) {})
	box = jsMethods("Option", map[string]func(*machine, []any, spot) (any, error){
		"default": set(func(a []any) { o.def = first(a) }), "env": set(func(a []any) { o.env = show(first(a)) }),
		"argParser": set(func(a []any) { o.parse = first(a) }), "makeOptionMandatory": set(func(a []any) { o.must = len(a) == 0 || a[0] == true }),
		"choices": set(func(a []any) {
			if l, ok := first(a).(*list); ok {
				o.choices = l.items
			}
		}),
		"hideHelp": nothing, "conflicts": nothing, "implies": nothing, "helpGroup": nothing, "preset": nothing,
	})
	box.option = o
	return box
}

// take sets an option to a text, as its parser wants it.
func (c *jsCommand) take(m *machine, o *jsOption, v any, from string, at spot) error {
	if o.many && from == "cli" {
		l, _ := c.values[o.key].(*list)
		if l == nil || c.from[o.key] == "default" {
			l = &list{}
		}
		v = &list{items: append(slices.Clone(l.items), v)}
	}
	if t, isText := v.(string); isText && o.parse != nil && o.parse != any(undefined) {
		before, had := c.values[o.key]
		if !had {
			before = undefined
		}
		x, err := m.call(o.parse, undefined, []any{t, before}, nil, at)
		if err != nil {
			if t, ok := err.(*thrown); ok {
				if e, ok := t.v.(*opaque); ok && strings.HasPrefix(e.path, "commander.Invalid") {
					return &exit{}
				}
			}
			return err
		}
		v = x
	} else if isText && len(o.choices) > 0 && !slices.Contains(o.choices, v) {
		return &exit{}
	}
	c.values[o.key], c.from[o.key] = v, from
	return nil
}

// dispatch goes through the words of the command line.
func (c *jsCommand) dispatch(m *machine, words []any, at spot) error {
	var operands, unknown []any
	dest := &operands
	for i := 0; i < len(words); i++ {
		w, ok := words[i].(string)
		if !ok {
			return undecided("the arguments of the command line")
		}
		if w == "--" {
			*dest = append(*dest, words[i+1:]...)
			break
		}
		if len(w) < 2 || w[0] != '-' {
			*dest = append(*dest, w)
			if c.ordered && len(c.subs) > 0 && len(operands) == 1 && len(unknown) == 0 {
				unknown = append(unknown, words[i+1:]...)
				break
			}
			continue
		}
		if w == "-h" || w == "--help" {
			return &exit{}
		}
		flag, text, has := strings.Cut(w, "=")
		o := c.find(flag)
		if o == nil && len(w) > 2 && len(w) < 64 && w[1] != '-' { // -p80, -dp 80
			if x := c.find(w[:2]); x != nil {
				if x.value {
					o, text, has = x, w[2:], true
				} else {
					o = x
					words = slices.Insert(slices.Clone(words), i+1, any("-"+w[2:]))
					text, has = "", false
				}
			}
		}
		switch {
		case o == nil:
			dest = &unknown
			*dest = append(*dest, w)
			continue
		case !o.value:
			if err := c.take(m, o, !o.negated, "cli", at); err != nil {
				return err
			}
			continue
		}
		switch next := any(nil); {
		case has:
			if err := c.take(m, o, text, "cli", at); err != nil {
				return err
			}
		default:
			if i+1 < len(words) {
				next = words[i+1]
			}
			t, ok := next.(string)
			switch {
			case next != nil && !ok:
				return undecided("the arguments of the command line")
			case next == nil && !o.optional:
				return &exit{}
			case next == nil, o.optional && strings.HasPrefix(t, "-"):
				if err := c.take(m, o, true, "cli", at); err != nil {
					return err
				}
			default:
				i++
				if err := c.take(m, o, t, "cli", at); err != nil {
					return err
				}
				for o.many && i+1 < len(words) {
					t, ok := words[i+1].(string)
					if !ok || strings.HasPrefix(t, "-") {
						break
					}
					i++
					if err := c.take(m, o, t, "cli", at); err != nil {
						return err
					}
				}
			}
		}
	}
	for _, o := range c.options {
		if o.env == "" || c.from[o.key] == "cli" {
			continue
		}
		if v, ok := m.lookup(o.env, at); ok {
			var x any = v
			if !o.value {
				x = true
			}
			if err := c.take(m, o, x, "env", at); err != nil {
				return err
			}
		}
	}
	c.obj.set("args", &list{items: append(slices.Clone(operands), unknown...)})
	if len(operands) > 0 {
		for _, sub := range c.subs {
			if name := show(operands[0]); sub.name == name || slices.Contains(sub.aliases, name) {
				return sub.dispatch(m, append(slices.Clone(operands[1:]), unknown...), at)
			}
		}
	}
	if c.usual != nil {
		return c.usual.dispatch(m, append(slices.Clone(operands), unknown...), at)
	}
	for p := c; p != nil; p = p.up {
		for _, o := range p.options {
			if _, set := p.values[o.key]; o.must && !set {
				return &exit{}
			}
		}
	}
	if len(unknown) > 0 && !c.loose || c.action == nil && len(c.subs) > 0 {
		return &exit{}
	}
	if c.action == nil {
		return nil
	}
	var args []any
	for i, name := range c.operands {
		switch {
		case strings.Contains(name, "..."):
			args = append(args, &list{items: slices.Clone(operands[min(i, len(operands)):])})
		case i < len(operands):
			args = append(args, operands[i])
		case strings.HasPrefix(name, "<"):
			return &exit{}
		default:
			args = append(args, c.defaults[i])
		}
	}
	for p := c; p != nil; p = p.up {
		for _, h := range p.hooks {
			if _, err := m.call(h, undefined, []any{p.obj, c.obj}, nil, at); err != nil {
				return err
			}
		}
	}
	v, err := m.call(c.action, c.obj, append(args, c.opts(), c.obj), nil, at)
	if p, ok := v.(*promise); ok && err == nil && p.err != nil {
		return p.err
	}
	return err
}

func (c *jsCommand) find(flag string) *jsOption {
	for _, o := range c.options {
		if flag == o.long || flag == o.short {
			return o
		}
	}
	return nil
}
