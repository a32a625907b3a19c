package value

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// assigned gives a variable of the environment as the program itself may have
// set it: os.environ["X"] = …, os.environ.setdefault("X", …), process.env.X = ….
func (e *Eval) assigned(v *Value) *Value {
	key := "env=" + v.Text
	if e.busy(key) {
		return v
	}
	e.active[key] = true
	defer delete(e.active, key)
	out := v
	for _, site := range e.assignments(v.Text) {
		n, f := site.Node, site.Scope.File
		holder := n.Kid(0)
		if n.Is(code.Call) {
			holder = holder.Kid(0)
		}
		if f.Name == v.At.File && n.Off >= offset(f, v.At) || e.Expr(holder, site.Scope).Kind != EnvMap {
			continue
		}
		if n.Is(code.Call) {
			out = op("unset", true, f.At(n), out, e.Expr(n.Kids[2], site.Scope)).with(Step{f.At(n), f.Text(n)})
			continue
		}
		// A variable that is set holds text.
		w := op("String", f.Lang == code.Python, f.At(n), e.Expr(site.Value, site.Scope)).with(Step{f.At(n), f.Text(n) + " is set here"})
		if site.Op == "||=" || site.Op == "??=" {
			name := strings.TrimSuffix(site.Op, "=")
			if f.Lang == code.Ruby { // empty text is true there
				name = "??"
			}
			w = op(name, false, w.At, out, w)
		}
		for i := len(site.Guards) - 1; i >= 0; i-- {
			w = e.guarded(site.Guards[i], w, out, nil)
		}
		out = w
	}
	return out
}

// assignments lists the places that may set a variable of the environment, in
// the order of the files; each file is gone through once.
func (e *Eval) assignments(name string) []code.Site {
	files := e.Loader.Loaded()
	for ; e.scanned < len(files); e.scanned++ {
		f := files[e.scanned]
		for _, site := range f.Sets {
			n := site.Node
			key := n.Name
			if n.Is(code.Index) && n.Kid(1).Is(code.String) {
				key = n.Kids[1].Name
			}
			if key != "" && strings.Contains(strings.ToLower(n.Kid(0).Dotted()), "env") {
				e.sets[key] = append(e.sets[key], site)
			}
		}
		for _, site := range f.Calls {
			if fn := site.Node.Kid(0); fn.Is(code.Member) && fn.Name == "setdefault" && site.Node.Kid(1).Is(code.String) && site.Node.Kid(2) != nil {
				key := site.Node.Kids[1].Name
				e.sets[key] = append(e.sets[key], site)
			}
		}
	}
	return e.sets[name]
}

// parsers are the argument parsers that give an object with one attribute an
// argument (Python documentation, "argparse").
var parsers = map[string]bool{"argparse.ArgumentParser().parse_args()": true}

// argument gives an attribute of what an argument parser returns: from the
// arguments of the start command, else the argument's default.
func (e *Eval) argument(base *Value, name string, at place.Span) *Value {
	if !parsers[base.Text] {
		return nil
	}
	for _, f := range e.Loader.Loaded() {
		for _, site := range f.Calls {
			if fn := site.Node.Kid(0); !fn.Is(code.Member) || fn.Name != "add_argument" {
				continue
			}
			var flags []string
			var def, kind, action *code.Node
			dest := ""
			for _, a := range site.Node.Args() {
				switch {
				case a.Is(code.String):
					flags = append(flags, a.Name)
				case a.Is(code.Keyword) && a.Name == "default":
					def = a.Kid(0)
				case a.Is(code.Keyword) && a.Name == "type":
					kind = a.Kid(0)
				case a.Is(code.Keyword) && a.Name == "action":
					action = a.Kid(0)
				case a.Is(code.Keyword) && a.Name == "dest" && a.Kid(0).Is(code.String):
					dest = a.Kids[0].Name
				}
			}
			if dest == "" {
				dest = destination(flags)
			}
			if dest != name || len(flags) == 0 {
				continue
			}
			if action.Is(code.String) && (action.Name == "store_true" || action.Name == "store_false") {
				on := false
				for _, a := range e.Args {
					if a.Kind != Str && a.Kind != Env { // one word may be several flags
						return unknown("an argument that is a switch", f.At(site.Node))
					}
					on = on || a.Kind == Str && slices.Contains(flags, a.Text)
				}
				return boolean(on == (action.Name == "store_true"), f.At(site.Node))
			}
			if action != nil {
				return unknown("an argument that is a switch", f.At(site.Node))
			}
			v := &Value{Kind: Null, At: f.At(site.Node)}
			if def != nil {
				v = e.Expr(def, site.Scope)
			}
			if given := e.given(flags); given != nil {
				v = given
			}
			// A default that is text is converted like an argument; any
			// other is taken as it is.
			if kind != nil && v.Kind != Num && v.Kind != Null {
				if c, ok := casts[e.Expr(kind, site.Scope).Text]; ok && c != "truthy" {
					v = op(c, true, v.At, v)
				}
			}
			return v.with(Step{f.At(site.Node), f.Text(site.Node)})
		}
	}
	return unknown("the argument "+name, at)
}

func destination(flags []string) string {
	for _, f := range flags {
		if !strings.HasPrefix(f, "-") {
			return f
		}
		if long, ok := strings.CutPrefix(f, "--"); ok {
			return strings.ReplaceAll(long, "-", "_")
		}
	}
	if len(flags) > 0 {
		return strings.TrimLeft(flags[0], "-")
	}
	return ""
}

// given gives the value that the start command passes for a flag, or for the
// first argument that is no flag.
func (e *Eval) given(flags []string) *Value {
	for i, a := range e.Args {
		for _, f := range flags {
			switch {
			case !strings.HasPrefix(f, "-"):
				if i == 0 && !(a.Kind == Str && strings.HasPrefix(a.Text, "-")) {
					return a
				}
			case a.Kind == Str && a.Text == f && i+1 < len(e.Args):
				return e.Args[i+1]
			case a.Kind == Str && strings.HasPrefix(a.Text, f+"="):
				return text(a.Text[len(f)+1:], a.At)
			case a.Kind == Op && a.Text == "concat" && a.Kids[0].Kind == Str && strings.HasPrefix(a.Kids[0].Text, f+"="):
				rest := append([]*Value{text(a.Kids[0].Text[len(f)+1:], a.At)}, a.Kids[1:]...)
				if rest[0].Text == "" && len(rest) > 1 {
					rest = rest[1:]
				}
				return Concat(rest...)
			}
		}
	}
	return nil
}

// percent formats as Python's text % values for plain %s and %d.
func percent(format string, args []*Value, at place.Span) *Value {
	var parts []*Value
	next := 0
	for {
		i := strings.IndexByte(format, '%')
		if i < 0 || i+1 >= len(format) {
			break
		}
		if i > 0 {
			parts = append(parts, text(format[:i], at))
		}
		switch format[i+1] {
		case '%':
			parts = append(parts, text("%", at))
		case 's', 'd', 'i':
			if next >= len(args) {
				return unknown("a formatted text", at)
			}
			parts = append(parts, args[next])
			next++
		default:
			return unknown("a formatted text", at)
		}
		format = format[i+2:]
	}
	if format != "" {
		parts = append(parts, text(format, at))
	}
	return joined(parts, at)
}

// braces formats as Python's text.format(…) for {}, {0} and {name}.
func braces(format string, args []*Value, keys map[string]*Value, at place.Span) *Value {
	var parts []*Value
	next := 0
	for format != "" {
		i := strings.IndexByte(format, '{')
		if i < 0 {
			break
		}
		j := strings.IndexByte(format[i:], '}')
		if j < 0 || strings.HasPrefix(format[i+1:], "{") {
			return unknown("a formatted text", at)
		}
		if i > 0 {
			parts = append(parts, text(format[:i], at))
		}
		name := format[i+1 : i+j]
		v := keys[name]
		if name == "" && next < len(args) {
			v = args[next]
			next++
		}
		if len(name) == 1 && name[0] >= '0' && name[0] <= '9' && int(name[0]-'0') < len(args) {
			v = args[name[0]-'0']
		}
		if v == nil {
			return unknown("a formatted text", at)
		}
		parts = append(parts, v)
		format = format[i+j+1:]
	}
	if format != "" {
		parts = append(parts, text(format, at))
	}
	return joined(parts, at)
}

func joined(parts []*Value, at place.Span) *Value {
	v := Concat(append([]*Value{text("", at)}, parts...)...)
	if v.Kind == Op {
		v.At, v.Py = at, true
	}
	return v
}

// offset is the byte at which a place of the file begins.
func offset(f *code.File, at place.Span) int32 { return int32(f.Lines.Offset(at.Line, at.Col)) }

// argumentCount is the length of the argument list: the program, and each
// argument that a shell leaves there.
func (e *Eval) argumentCount(at place.Span) *Value { return e.counted(1, at) }

// arguments is how many there are without the program.
func (e *Eval) arguments(at place.Span) *Value { return e.counted(0, at) }

// argumentAt is one of them; null where there are fewer.
func (e *Eval) argumentAt(i int, at place.Span) *Value {
	if i < 0 || i >= len(e.Args) {
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at} // out of bounds
	}
	return e.Args[i]
}

func (e *Eval) counted(first float64, at place.Span) *Value {
	v := number(first, at)
	for _, a := range e.Args {
		one := number(1, at)
		if a.Kind != Str {
			one = &Value{Kind: Cond, Kids: []*Value{a, number(1, at), number(0, at)}, At: at}
		}
		v = op("+", true, at, v, one)
	}
	return v
}

// opened gives the data file that open("x.json") or readFileSync("x.json")
// opens, seen from the folder that the program runs in; nil for all else.
func (e *Eval) opened(v *Value) *document.Node {
	if v.Kind != External {
		return nil
	}
	switch v.Text {
	case "open()", "fs.readFileSync()", "io.open()", "fs/promises.readFile()", "fs.promises.readFile()", "Deno.readTextFileSync()", "Deno.readTextFile()", "fs.readFile()":
		if len(v.Kids) == 0 {
			return nil
		}
		switch name := v.Kids[0]; {
		case name.Kind == Str:
			return e.Loader.Data(path.Join(e.Dir, name.Text))
		case name.Kind == External && name.Text == "URL()" && len(name.Kids) == 2 && name.Kids[0].Kind == Str && strings.HasPrefix(name.Kids[1].Text, "import.meta"): // beside the file
			return e.Loader.Data(path.Join(dirOf(name.At.File), name.Kids[0].Text))
		case name.Kind == External && strings.HasPrefix(name.Text, "path.") && len(name.Kids) > 1 && strings.HasPrefix(name.Kids[0].Text, "__dirname"):
			return e.Loader.Data(path.Join(dirOf(name.At.File), name.Kids[len(name.Kids)-1].literal()))
		}
	case "pathlib.Path().read_text()", "pathlib.Path().read_bytes()", "pathlib.Path().open()":
		if p := v.Recv; p != nil && p.Recv != nil && len(p.Recv.Kids) == 1 && p.Recv.Kids[0].Kind == Str {
			return e.Loader.Data(path.Join(e.Dir, p.Recv.Kids[0].Text))
		}
	case "open().read()", "io.open().read()":
		if p := v.Recv; p != nil && p.Recv != nil {
			return e.opened(p.Recv)
		}
	}
	return nil
}

// commandOption gives a parameter of a function that a decorator makes a
// command of: from the arguments, the variable of the option, its default
// (documentation of click 8, "Options"). Functions with other decorators get
// their parameters from whoever calls them.
func (e *Eval) commandOption(b *code.Binding, s *code.Scope) *Value {
	fn := b.Func
	if s.File.Lang != code.Python || fn == nil || len(fn.Kids) < 3 || fn.Flag&code.Method != 0 {
		return nil
	}
	for _, d := range fn.Kids[2:] {
		if !d.Is(code.Call) {
			continue
		}
		if kind := e.Expr(d.Kid(0), s.Parent).Text; kind != "click.option" && kind != "click.argument" {
			continue
		}
		var flags []string
		var def, kind, env *code.Node
		for _, a := range d.Args() {
			switch {
			case a.Is(code.String):
				flags = append(flags, a.Name)
			case a.Is(code.Keyword) && a.Name == "default":
				def = a.Kid(0)
			case a.Is(code.Keyword) && a.Name == "type":
				kind = a.Kid(0)
			case a.Is(code.Keyword) && a.Name == "envvar":
				env = a.Kid(0)
			}
		}
		if destination(flags) != b.Name {
			continue
		}
		v := &Value{Kind: Null, At: s.File.At(d)}
		if def != nil {
			v = e.Expr(def, s.Parent)
		}
		number := v.Kind == Num || kind != nil && e.Expr(kind, s.Parent).Text == "int"
		if env.Is(code.String) { // an empty variable counts as not set
			v = op("||", true, v.At, &Value{Kind: Env, Text: env.Name, Unset: ReadsNull, At: s.File.At(env)}, v)
		}
		if given := e.given(flags); given != nil {
			v = given
		}
		if number {
			v = op("int", true, v.At, v)
		}
		return v.with(Step{s.File.At(d), s.File.Text(d)})
	}
	return nil
}
