package value

import (
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// Options of the command line as libraries of JavaScript and Python give them,
// and settings of files in sections (documentation of Node.js util.parseArgs,
// commander 14, yargs 18, minimist 1, tornado.options, configparser; read
// 2026-11).

// flagged gives what the start command passes for an option by its names.
func (e *Eval) flagged(names ...string) *Value {
	var flags []string
	for _, n := range names {
		switch {
		case n == "":
		case strings.HasPrefix(n, "-"):
			flags = append(flags, n)
		case len(n) == 1:
			flags = append(flags, "-"+n)
		default:
			flags = append(flags, "--"+n)
		}
	}
	return e.given(flags)
}

// parseArgs evaluates util.parseArgs({ options }).
func (e *Eval) parseArgs(args []*Value, at place.Span) *Value {
	if len(args) == 0 || args[0].Get("options") == nil {
		return nil
	}
	values := &Value{Kind: Object, At: at}
	opts := args[0].Get("options")
	for i, name := range opts.Keys {
		o := opts.Kids[i]
		v := e.flagged(name, o.Get("short").literal())
		if o.Get("type").literal() == "boolean" {
			if v = nil; e.switchedOn(name, o.Get("short").literal()) {
				v = boolean(true, at)
			}
		}
		if v == nil {
			v = o.Get("default")
		}
		if v != nil {
			values.Keys, values.Kids = append(values.Keys, name), append(values.Kids, v)
		}
	}
	return &Value{Kind: Object, At: at, Keys: []string{"values", "positionals"}, Kids: []*Value{values, unknown("arguments that are no options", at)}}
}

// switchedOn reports whether the start command passes an option that takes no
// value: its name after two dashes, or its letter, also among others.
func (e *Eval) switchedOn(name, short string) bool {
	for _, a := range e.Args {
		if a.Kind != Str {
			continue
		}
		if a.Text == "--" {
			break
		}
		letters, ok := strings.CutPrefix(a.Text, "-")
		if a.Text == "--"+name || ok && short != "" && !strings.HasPrefix(letters, "-") && strings.Contains(letters, short) {
			return true
		}
	}
	return false
}

func (v *Value) literal() string {
	if v != nil && v.Kind == Str {
		return v.Text
	}
	return ""
}

// dashed is the name of an option behind a property: dryRun is dry-run.
func dashed(name string) string {
	var b strings.Builder
	for _, r := range name {
		if r >= 'A' && r <= 'Z' {
			b.WriteByte('-')
			r += 'a' - 'A'
		}
		b.WriteRune(r)
	}
	return b.String()
}

// parsed gives a property of what an option parser returns; nil where it is
// none.
func (e *Eval) parsed(base *Value, name string, at place.Span) *Value {
	switch {
	case strings.HasPrefix(base.Text, "commander.") && (strings.HasSuffix(base.Text, ".opts()") || strings.HasSuffix(base.Text, "()") || base.Text == "commander.program"):
		return e.commanded(name, at)
	case (strings.HasPrefix(base.Text, "yargs") || strings.HasPrefix(base.Text, "yargs/yargs")) && (strings.HasSuffix(base.Text, ".argv") || strings.HasSuffix(base.Text, ".parse()") || strings.HasSuffix(base.Text, ".parseSync()")):
		return e.yargs(name, at)
	case base.Text == "minimist()" && len(base.Kids) > 0:
		return e.minimist(base, name, at)
	case base.Text == "tornado.options.options" && len(e.calls("parse_config_file")) > 0:
		return unknown("an option that a file may give", at)
	case base.Text == "tornado.options.options":
		for _, site := range e.calls("define") {
			if !site.Node.Kid(1).Is(code.String) || site.Node.Kids[1].Name != name {
				continue
			}
			_, keys := e.Arguments(site)
			d, kind := keys["default"], ""
			if k := keys["type"]; k != nil {
				kind = k.Text
			} else if d != nil && d.Kind == Num {
				kind = "int"
			} else if d != nil && d.Kind == Bool {
				kind = "bool"
			}
			if v := e.flagged(name); v != nil { // documentation of Tornado 6.5, "tornado.options", define
				switch kind {
				case "int":
					return op("int", true, at, v)
				case "bool":
					return op("truthy", true, at, v)
				case "", "str":
					return v
				}
				return unknown("an option of a type of its own", at)
			}
			for _, a := range e.Args {
				if a.Kind == Str && a.Text == "--"+name && kind == "bool" {
					return boolean(true, at)
				}
			}
			if d != nil {
				return d
			}
			return &Value{Kind: Null, At: at}
		}
	case (base.Text == "URL()" || base.Text == "url.URL()") && len(base.Kids) > 0 && (name == "port" || name == "hostname" || name == "host"):
		return op("url "+name, false, at, base.Kids[0])
	}
	return nil
}

// minimist is an option as minimist reads it: by its name and those that stand
// for the same; a boolean takes no value.
func (e *Eval) minimist(base *Value, name string, at place.Span) *Value {
	var options *Value
	if len(base.Kids) > 1 {
		options = base.Kids[1]
	}
	names := []string{name}
	alias := options.Get("alias")
	for _, k := range alias.keys() {
		others := append([]string{k}, texts(alias.Get(k))...)
		if slices.Contains(others, name) {
			names = append(names, others...)
		}
	}
	var def *Value
	for _, n := range names {
		if d := options.Get("default").Get(n); d != nil {
			def = d
		}
	}
	booleans := texts(options.Get("boolean"))
	for _, n := range names {
		if slices.Contains(booleans, n) {
			if v := e.switched1(names, at); v != nil {
				return v
			}
			if def == nil {
				def = boolean(false, at)
			}
			return def
		}
	}
	if v := e.flagged(names...); v != nil {
		return v
	}
	if def != nil {
		return def
	}
	if v := e.switched1(names, at); v != nil { // the last word of the command line
		return v
	}
	return &Value{Kind: Undef, At: at}
}

// switched1 is what the command line says of an option without a value: its
// name, or no- before it; nil where it does not stand there.
func (e *Eval) switched1(names []string, at place.Span) *Value {
	for _, n := range names {
		short := ""
		if len(n) == 1 {
			short = n
		}
		switch {
		case e.switchedOn(n, short):
			return boolean(true, at)
		case e.switchedOn("no-"+n, ""):
			return boolean(false, at)
		}
		if v := e.given([]string{"--" + n}); v != nil && v.Kind == Str && (v.Text == "true" || v.Text == "false") {
			return boolean(v.Text == "true", at)
		}
	}
	return nil
}

// keys are the names of an object; none for all else.
func (v *Value) keys() []string {
	if v == nil || v.Kind != Object {
		return nil
	}
	return v.Keys
}

// texts are the texts of a list, or the one that a value is.
func texts(v *Value) []string {
	switch {
	case v == nil:
	case v.Kind == Str:
		return []string{v.Text}
	case v.Kind == List:
		var list []string
		for _, k := range v.Kids {
			list = append(list, k.literal())
		}
		return list
	}
	return nil
}

// calls lists the calls by the name of what is called.
func (e *Eval) calls(name string) []code.Site {
	for files := e.Loader.Loaded(); e.numbered < len(files); e.numbered++ {
		for _, site := range files[e.numbered].Calls {
			if fn := site.Node.Kid(0); fn.Is(code.Name) || fn.Is(code.Member) {
				e.calledAs[fn.Name] = append(e.calledAs[fn.Name], site)
			}
		}
	}
	return e.calledAs[name]
}

// commandAction is the parameter of a function that commander or yargs calls
// for a command and that holds its options; nil for any other.
func (e *Eval) commandAction(b *code.Binding, s *code.Scope) *Value {
	if !javascript(s.File.Lang) || b.Func == nil {
		return nil
	}
	for _, site := range s.File.Calls {
		fn, args := site.Node.Kid(0), site.Node.Args()
		if !fn.Is(code.Member) || len(args) == 0 || fn.Name != "action" && fn.Name != "command" {
			continue
		}
		last := args[len(args)-1]
		if last != b.Func && !(last.Is(code.Name) && last.Name == b.Func.Name && last.Name != "") {
			continue
		}
		if fn.Name == "command" {
			if e.usesLibrary("yargs") && b.Index == 0 && len(args) > 1 {
				return &Value{Kind: External, Text: "yargs.argv", At: s.File.At(b.Func)}
			}
			continue
		}
		if !e.usesLibrary("commander") {
			continue
		}
		before := 0 // the arguments of the command come first
		for x := fn.Kid(0); x.Is(code.Call) && x.Kid(0).Is(code.Member); x = x.Kids[0].Kid(0) {
			switch x.Kids[0].Name {
			case "argument":
				before++
			case "command":
				if a := x.Kid(1); a.Is(code.String) {
					before += strings.Count(a.Name, "<") + strings.Count(a.Name, "[")
				}
			}
		}
		if b.Index == before {
			return &Value{Kind: External, Text: "commander.opts()", At: s.File.At(b.Func)}
		}
	}
	return nil
}

// commanded is an option of commander: .option("-p, --port <n>", text, default).
func (e *Eval) commanded(name string, at place.Span) *Value {
	for _, call := range []string{"option", "requiredOption", "Option"} {
		for _, site := range e.calls(call) {
			if !site.Node.Kid(1).Is(code.String) {
				continue
			}
			var flags []string
			for _, part := range strings.FieldsFunc(site.Node.Kids[1].Name, func(r rune) bool { return r == ',' || r == ' ' || r == '|' }) {
				if strings.HasPrefix(part, "-") {
					flags = append(flags, part)
				}
			}
			long := flags[max(0, len(flags)-1):]
			if len(long) == 0 {
				continue
			}
			word := strings.TrimPrefix(long[0], "--")
			if rest, ok := strings.CutPrefix(word, "no-"); ok && rest == dashed(name) { // on, unless it is said
				return boolean(!e.switchedOn(word, ""), at)
			}
			if word != dashed(name) {
				continue
			}
			if !strings.ContainsAny(site.Node.Kids[1].Name, "<[") { // it takes no value
				short := ""
				if len(flags) > 1 {
					short = strings.TrimPrefix(flags[0], "-")
				}
				if e.switchedOn(word, short) {
					return boolean(true, at)
				}
				if args, _ := e.Arguments(site); len(args) > 2 && call != "Option" {
					return args[2]
				}
				return &Value{Kind: Undef, At: at}
			}
			if call == "Option" {
				return e.builtOption(flags, site, at)
			}
			if v := e.given(flags); v != nil {
				return v
			}
			args, _ := e.Arguments(site)
			switch {
			case len(args) > 3 && args[2].Kind == Func:
				return args[3]
			case len(args) > 2 && args[2].Kind != External:
				return args[2]
			case len(args) > 3:
				return args[3]
			}
			return &Value{Kind: Undef, At: at}
		}
	}
	return nil
}

// builtOption is an option of commander that is made in steps: new
// Option("-p, --port <n>").env("PORT").default(8000).argParser(Number).
func (e *Eval) builtOption(flags []string, site code.Site, at place.Span) *Value {
	v, given := e.given(flags), true
	if v == nil {
		v, given = &Value{Kind: Undef, At: at}, false
	}
	var env, def, parse *Value
	for n := site.Node; n != nil; {
		var next *code.Node
		for _, x := range site.Scope.File.Calls {
			fn := x.Node.Kid(0)
			if !fn.Is(code.Member) || fn.Kid(0) != n {
				continue
			}
			next = x.Node
			args, _ := e.Arguments(x)
			if len(args) == 0 {
				break
			}
			switch fn.Name {
			case "env":
				env = args[0]
			case "default":
				def = args[0]
			case "argParser":
				parse = args[0]
			}
			break
		}
		n = next
	}
	parsed := func(v *Value) *Value {
		if parse != nil {
			return e.converted(parse, v, at)
		}
		return v
	}
	if given {
		return parsed(v)
	}
	if def != nil {
		v = def
	}
	if env != nil {
		set := &Value{Kind: Env, Text: env.literal(), Unset: ReadsUndef, At: env.At}
		v = &Value{Kind: Cond, At: at, Kids: []*Value{op("isset", false, at, set), parsed(set), v}}
	}
	return v
}

// yargs is an option of yargs: .option("port", { default, alias, type }).
func (e *Eval) yargs(name string, at place.Span) *Value {
	for _, call := range []string{"option", "options", "default"} {
		for _, site := range e.calls(call) {
			args, _ := e.Arguments(site)
			var spec *Value
			switch {
			case len(args) > 1 && args[0].literal() == name && call == "default":
				spec = &Value{Kind: Object, Keys: []string{"default"}, Kids: []*Value{args[1]}}
			case len(args) > 1 && (args[0].literal() == name || args[0].literal() == dashed(name)):
				spec = args[1]
			case len(args) == 1:
				spec = args[0].Get(name)
			}
			if spec == nil {
				continue
			}
			names := append([]string{dashed(name)}, texts(spec.Get("alias"))...)
			if d := spec.Get("default"); spec.Get("type").literal() == "boolean" || spec.Get("boolean") != nil || d != nil && d.Kind == Bool {
				if v := e.switched1(names, at); v != nil {
					return v
				}
			} else if v := e.flagged(names...); v != nil {
				if spec.Get("type").literal() == "number" {
					return op("Number", false, at, v)
				}
				return v
			}
			v := &Value{Kind: Undef, At: at}
			if d := spec.Get("default"); d != nil {
				v = d
			}
			return e.yargsEnv(name, spec.Get("type").literal() == "number" || v.Kind == Num, v, at)
		}
	}
	if v := e.flagged(dashed(name)); v != nil {
		return v
	}
	return e.yargsEnv(name, false, &Value{Kind: Undef, At: at}, at)
}

// yargsEnv puts the variable of an option before its default, where the parser
// reads the environment: .env("PREFIX") (documentation of yargs 18, ".env()").
func (e *Eval) yargsEnv(name string, number bool, def *Value, at place.Span) *Value {
	for _, site := range e.calls("env") {
		if !strings.HasPrefix(e.Callee(site).Text, "yargs") {
			continue
		}
		args, _ := e.Arguments(site)
		prefix := ""
		switch {
		case len(args) == 1 && args[0].Kind == Str && args[0].Text != "":
			prefix = strings.TrimSuffix(args[0].Text, "_") + "_"
		case len(args) == 1 && args[0].Kind != Str && args[0].Kind != Bool:
			return unknown("an option that the environment may give", at)
		}
		v := &Value{Kind: Env, Text: prefix + strings.ToUpper(strings.ReplaceAll(dashed(name), "-", "_")), Unset: ReadsUndef, At: site.Scope.File.At(site.Node)}
		if number {
			return &Value{Kind: Cond, At: at, Kids: []*Value{op("nothing", false, at, v), def, op("Number", false, at, v)}}
		}
		return op("??", false, at, v, def)
	}
	return def
}

// ini is the text of an object that is a section of a file of settings.
const ini = "ini"

// sections gives what a ConfigParser reads as an object of its sections: the
// files of c.read("app.ini"), a later one over an earlier one, each section with
// what [DEFAULT] says (Python 3.14, "configparser"). Nil where it is not known.
func (e *Eval) sections(obj *code.Node, at place.Span) *Value {
	var all *Value
	for _, site := range e.calls("read") {
		fn := site.Node.Kid(0)
		if !fn.Is(code.Member) || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != obj.Name {
			continue
		}
		args, _ := e.Arguments(site)
		if len(args) == 0 {
			continue
		}
		names := []*Value{args[0]}
		if args[0].Kind == List {
			names = args[0].Kids
		}
		for _, name := range names {
			o := e.named(name, at, sectioned)
			if o == nil {
				if _, ok := e.PathOf(name); ok { // one that is not there is passed over
					continue
				}
				return unknown("a file of settings that is named while the program runs", at)
			}
			all = overlaid(all, o)
		}
	}
	return all
}

// sectioned is a file of settings as an object of its sections.
func sectioned(d *document.Node) *Value {
	o := FromDocument(d)
	defaults := o.Get("DEFAULT")
	for i, in := range o.Kids {
		if in.Kind != Object {
			continue
		}
		in.Text = ini
		if defaults != nil && in != defaults {
			w := *defaults
			w.Keys, w.Kids = slices.Clone(w.Keys), slices.Clone(w.Kids)
			w.spread(in, true)
			o.Kids[i] = &w
		}
	}
	return o
}

// overlaid is one object of sections over another, section by section.
func overlaid(a, b *Value) *Value {
	switch {
	case a == nil:
		return b
	case b.Kind == Cond && b.choices(maxChoices) < maxChoices:
		return &Value{Kind: Cond, Py: b.Py, At: b.At, Kids: []*Value{b.Kids[0], overlaid(a, b.Kids[1]), overlaid(a, b.Kids[2])}}
	case a.Kind == Cond && a.choices(maxChoices) < maxChoices:
		return &Value{Kind: Cond, Py: a.Py, At: a.At, Kids: []*Value{a.Kids[0], overlaid(a.Kids[1], b), overlaid(a.Kids[2], b)}}
	case a.Kind != Object || b.Kind != Object:
		return unknown("several files of settings", b.At)
	}
	o := &Value{Kind: Object, At: b.At, Keys: slices.Clone(a.Keys), Kids: slices.Clone(a.Kids)}
	for i, k := range b.Keys {
		in := b.Kids[i]
		if before := o.Get(k); before != nil && before.Kind == Object && in.Kind == Object {
			both := *before
			both.Keys, both.Kids = slices.Clone(before.Keys), slices.Clone(before.Kids)
			both.spread(in, true)
			in = &both
		}
		o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, in)
	}
	return o
}

// section evaluates c["a"], c.get("a", "b"), c.getint("a", "b") and what the
// section c["a"] is asked of a ConfigParser; nil for all else.
func (e *Eval) section(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	if n.Is(code.Index) {
		if d := e.parser(n.Kid(0), s, c, at); d != nil {
			return e.key(d, e.expr(n.Kid(1), s, c).literal(), s, c, at)
		}
		return nil
	}
	if !n.Is(code.Call) || !n.Kid(0).Is(code.Member) {
		return nil
	}
	fn := n.Kids[0]
	conv, ok := map[string]string{"get": "", "getint": "int", "getboolean": "truthy", "getfloat": "float"}[fn.Name]
	if !ok {
		return nil
	}
	in := e.parser(fn.Kid(0), s, c, at)
	args, keys := []*Value(nil), map[string]*Value(nil)
	if in != nil {
		if args, keys = e.args(n, s, c); len(args) < 2 {
			return nil
		}
		in, args = e.key(in, args[0].literal(), s, c, at), args[1:]
	} else {
		if fn.Kid(0).Is(code.String) {
			return nil
		}
		if in = e.expr(fn.Kid(0), s, c); !in.sectional(0) {
			return nil
		}
		args, keys = e.args(n, s, c)
	}
	if len(args) == 0 {
		return nil
	}
	v := e.key(in, args[0].literal(), s, c, place.Span{})
	if conv != "" {
		v = op(conv, true, at, v)
	}
	other := keys["fallback"]
	if other == nil && len(args) > 1 {
		other = args[1]
	}
	if other == nil {
		if v.Kind == Undef {
			return unknown("a setting that is not in the file", at)
		}
		return v
	}
	if v.Kind == Undef || conv != "" && v.Kids[0].Kind == Undef {
		return other
	}
	return v
}

// sectional reports whether a value is a section of a file of settings.
func (v *Value) sectional(depth int) bool {
	switch v.Kind {
	case Object:
		return v.Text == ini
	case Cond:
		return depth < 8 && (v.Kids[1].sectional(depth+1) || v.Kids[2].sectional(depth+1))
	}
	return false
}

func (e *Eval) parser(obj *code.Node, s *code.Scope, c *context, at place.Span) *Value {
	if !obj.Is(code.Name) {
		return nil
	}
	if v := e.expr(obj, s, c); v.Kind != External || v.Text != "configparser.ConfigParser()" && v.Text != "configparser.RawConfigParser()" {
		return nil
	}
	return e.sections(obj, at)
}
