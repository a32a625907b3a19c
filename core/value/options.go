package value

import (
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
		if v == nil {
			v = o.Get("default")
		}
		if v != nil {
			values.Keys, values.Kids = append(values.Keys, name), append(values.Kids, v)
		}
	}
	return &Value{Kind: Object, At: at, Keys: []string{"values", "positionals"}, Kids: []*Value{values, unknown("arguments that are no options", at)}}
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
		alias := ""
		var def *Value
		if len(base.Kids) > 1 {
			def = base.Kids[1].Get("default").Get(name)
			alias = base.Kids[1].Get("alias").Get(name).literal()
		}
		if v := e.flagged(name, alias); v != nil {
			return v
		}
		if def != nil {
			return def
		}
		return &Value{Kind: Undef, At: at}
	case base.Text == "tornado.options.options":
		for _, site := range e.calls("define") {
			if !site.Node.Kid(1).Is(code.String) || site.Node.Kids[1].Name != name {
				continue
			}
			if v := e.flagged(name); v != nil {
				return op("int", true, at, v)
			}
			_, keys := e.Arguments(site)
			if d := keys["default"]; d != nil {
				return d
			}
			return &Value{Kind: Null, At: at}
		}
	case (base.Text == "URL()" || base.Text == "url.URL()") && len(base.Kids) > 0 && (name == "port" || name == "hostname" || name == "host"):
		return op("url "+name, false, at, base.Kids[0])
	}
	return nil
}

// calls lists the calls by the name of what is called.
func (e *Eval) calls(name string) []code.Site {
	var list []code.Site
	for _, f := range e.Loader.Loaded() {
		for _, site := range f.Calls {
			if fn := site.Node.Kid(0); (fn.Is(code.Name) || fn.Is(code.Member)) && fn.Name == name {
				list = append(list, site)
			}
		}
	}
	return list
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
			if len(long) == 0 || strings.TrimPrefix(long[0], "--") != dashed(name) {
				continue
			}
			if v := e.given(flags); v != nil {
				return v
			}
			args, _ := e.Arguments(site)
			switch {
			case call == "Option":
				return unknown("an option that is built in steps", at)
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
			alias := spec.Get("alias").literal()
			if v := e.flagged(dashed(name), alias); v != nil {
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

// sections gives the document that a ConfigParser reads: c.read("app.ini").
func (e *Eval) sections(obj *code.Node) *document.Node {
	if !obj.Is(code.Name) {
		return nil
	}
	for _, site := range e.calls("read") {
		fn := site.Node.Kid(0)
		if !fn.Is(code.Member) || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != obj.Name {
			continue
		}
		args, _ := e.Arguments(site)
		if len(args) == 0 {
			continue
		}
		name := args[0]
		if name.Kind == List && len(name.Kids) == 1 {
			name = name.Kids[0]
		}
		if p, ok := e.PathOf(name); ok {
			return e.Loader.Data(p)
		}
	}
	return nil
}

// section evaluates c["a"]["b"], c.get("a", "b") and c.getint("a", "b") of a
// ConfigParser; nil for all else.
func (e *Eval) section(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	switch {
	case n.Is(code.Index) && n.Kid(0).Is(code.Index):
		inner := n.Kids[0]
		if d := e.parser(inner.Kid(0), s, c); d != nil {
			a, b := e.expr(inner.Kid(1), s, c), e.expr(n.Kid(1), s, c)
			if v := d.Get(a.literal(), b.literal()); v != nil {
				return text(v.Text, v.At())
			}
			return unknown("a setting that is not in the file", at)
		}
	case n.Is(code.Call) && n.Kid(0).Is(code.Member):
		fn := n.Kids[0]
		conv, ok := map[string]string{"get": "", "getint": "int", "getboolean": "truthy"}[fn.Name]
		if !ok {
			return nil
		}
		args, keys := e.args(n, s, c)
		var v *Value
		if sec := fn.Kid(0); sec.Is(code.Index) && len(args) > 0 { // c["a"].getint("b")
			d := e.parser(sec.Kid(0), s, c)
			if d == nil {
				return nil
			}
			if k := d.Get(e.expr(sec.Kid(1), s, c).literal(), args[0].literal()); k != nil {
				v = text(k.Text, k.At())
			} else if len(args) > 1 {
				v = args[1]
			}
		} else if d := e.parser(sec, s, c); d != nil && len(args) > 1 {
			if k := d.Get(args[0].literal(), args[1].literal()); k != nil {
				v = text(k.Text, k.At())
			}
		} else {
			return nil
		}
		if v == nil {
			if v = keys["fallback"]; v == nil {
				return unknown("a setting that is not in the file", at)
			}
			return v
		}
		if conv != "" {
			v = op(conv, true, at, v)
		}
		return v
	}
	return nil
}

func (e *Eval) parser(obj *code.Node, s *code.Scope, c *context) *document.Node {
	if !obj.Is(code.Name) {
		return nil
	}
	if v := e.expr(obj, s, c); v.Kind != External || v.Text != "configparser.ConfigParser()" && v.Text != "configparser.RawConfigParser()" {
		return nil
	}
	return e.sections(obj)
}
