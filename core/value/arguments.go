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
				k := e.Expr(kind, site.Scope)
				if c, ok := casts[k.Text]; ok && c != "truthy" {
					v = op(c, true, v.At, v)
				} else if k.Kind == Func && v.Kind != List {
					v = e.invoke(k, []*Value{v}, nil, nil)
				}
			}
			return v.with(Step{f.At(site.Node), f.Text(site.Node)})
		}
	}
	return unknown("the argument "+name, at)
}

// allArguments is what an argument parser returns as a dictionary.
func (e *Eval) allArguments(base *Value, at place.Span) *Value {
	o := &Value{Kind: Object, At: at}
	for _, site := range e.calls("add_argument") {
		var flags []string
		dest := ""
		for _, a := range site.Node.Args() {
			switch {
			case a.Is(code.String):
				flags = append(flags, a.Name)
			case a.Is(code.Keyword) && a.Name == "dest" && a.Kid(0).Is(code.String):
				dest = a.Kids[0].Name
			}
		}
		if dest == "" {
			dest = destination(flags)
		}
		if dest != "" && !slices.Contains(o.Keys, dest) {
			o.Keys, o.Kids = append(o.Keys, dest), append(o.Kids, e.argument(base, dest, at))
		}
	}
	return o
}

func destination(flags []string) string {
	for _, f := range flags {
		if !strings.HasPrefix(f, "-") { // said as it is
			return f
		}
	}
	for _, f := range flags {
		if long, ok := strings.CutPrefix(f, "--"); ok {
			return strings.ReplaceAll(long, "-", "_")
		}
	}
	if len(flags) > 0 {
		return strings.TrimLeft(flags[0], "-")
	}
	return ""
}

// given gives the value that the start command passes for a flag, the last of
// several, or for the first argument that is no flag.
func (e *Eval) given(flags []string) (last *Value) {
	for i, a := range e.Args {
		for _, f := range flags {
			switch {
			case !strings.HasPrefix(f, "-"):
				if i == 0 && !(a.Kind == Str && strings.HasPrefix(a.Text, "-")) {
					return a
				}
			case a.Kind == Str && a.Text == f && i+1 < len(e.Args):
				last = e.Args[i+1]
			case a.Kind == Str && strings.HasPrefix(a.Text, f+"="):
				last = text(a.Text[len(f)+1:], a.At)
			case a.Kind == Op && a.Text == "concat" && a.Kids[0].Kind == Str && strings.HasPrefix(a.Kids[0].Text, f+"="):
				rest := append([]*Value{text(a.Kids[0].Text[len(f)+1:], a.At)}, a.Kids[1:]...)
				if rest[0].Text == "" && len(rest) > 1 {
					rest = rest[1:]
				}
				last = Concat(rest...)
			}
		}
	}
	return last
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

// opening are the calls that open or read the file that their first argument
// names (documentation of Node.js 24, "fs"; of Python 3.14, "io"; of Ruby 3.4,
// "File"; of PHP 8.4, "file_get_contents").
var opening = map[string]bool{"open()": true, "io.open()": true, "File.read()": true, "File.open()": true, "File.new()": true, "IO.read()": true, "file_get_contents()": true, "codecs.open()": true, "fs.readFileSync()": true, "fs/promises.readFile()": true, "fs.promises.readFile()": true, "fs.readFile()": true, "Deno.readTextFileSync()": true, "Deno.readTextFile()": true}

// opened gives the data file that open("x.json") or readFileSync("x.json")
// opens, seen from the folder that the program runs in; nil for all else.
func (e *Eval) opened(v *Value) *document.Node {
	if v.Kind != External {
		return nil
	}
	if opening[v.Text] {
		if len(v.Kids) == 0 {
			return nil
		}
		if p, ok := e.PathOf(v.Kids[0]); ok {
			return e.Loader.Data(p)
		}
		return nil
	}
	for _, end := range []string{".read()", ".read_text()", ".read_bytes()", ".open()"} {
		if !strings.HasSuffix(v.Text, end) || v.Recv == nil || v.Recv.Recv == nil {
			continue
		}
		of := v.Recv.Recv
		if end == ".read()" {
			return e.opened(of)
		}
		if p, ok := e.pathOf(of, 0); ok {
			return e.Loader.Data(p)
		}
	}
	return nil
}

// PathOf is the file or folder of the tree that a value names; ok is false where
// it is not known, and where it lies outside of the tree.
func (e *Eval) PathOf(v *Value) (p string, ok bool) {
	p, ok = e.pathOf(v, 0)
	return p, ok && p != ".." && !strings.HasPrefix(p, "../")
}

// PathUnder is the same in an environment.
func (e *Eval) PathUnder(v *Value, env Environ) (p string, ok bool) {
	p, ok = e.pathIn(v, &env, 0)
	return p, ok && p != ".." && !strings.HasPrefix(p, "../")
}

func (e *Eval) pathOf(v *Value, depth int) (string, bool) { return e.pathIn(v, nil, depth) }

// pathIn reads text seen from the folder that the program runs in, and what is
// made of the place of the source file (documentation of Python 3.14, "pathlib"
// and "os.path"; of Node.js 24, "path" and "ECMAScript modules"; of Ruby 3.4,
// "File"; of PHP 8.4, "dirname").
func (e *Eval) pathIn(v *Value, env *Environ, depth int) (string, bool) {
	if v == nil || depth > 12 {
		return "", false
	}
	word := func(k *Value) (string, bool) {
		if k.Kind != Str && env != nil {
			o := k.Under(*env)
			return o.Text, o.Kind == Str
		}
		return k.Text, k.Kind == Str
	}
	under := func(base string, rest []*Value) (string, bool) {
		for _, k := range rest {
			text, ok := word(k)
			if !ok {
				return "", false
			}
			base = path.Join(base, text)
		}
		return base, true
	}
	if env != nil {
		if o := v.Under(*env); o.Kind == Str {
			return path.Join(e.Dir, o.Text), true
		}
		if v.Kind == Cond && len(v.Kids) == 3 {
			if holds, ok := v.Kids[0].Under(*env).Truth(v.Py); ok && holds {
				return e.pathIn(v.Kids[1], env, depth+1)
			} else if ok {
				return e.pathIn(v.Kids[2], env, depth+1)
			}
		}
	}
	switch v.Kind {
	case Str:
		return path.Join(e.Dir, v.Text), true
	case Op:
		if len(v.Kids) == 1 && (v.Text == "astext" || v.Text == "String") {
			return e.pathIn(v.Kids[0], env, depth+1)
		}
		if len(v.Kids) == 0 || v.Text != "/" && v.Text != "concat" && v.Text != "+" {
			return "", false
		}
		if len(v.Variables()) == 0 && v.Kids[0].Kind == Str {
			o := v.Under(Environ{})
			return path.Join(e.Dir, o.Text), o.Kind == Str
		}
		base, ok := e.pathIn(v.Kids[0], env, depth+1)
		if !ok || v.Kids[0].Kind == Str && v.Text != "/" {
			return "", false
		}
		for _, k := range v.Kids[1:] {
			text, ok := word(k)
			if !ok {
				return "", false
			}
			if v.Text == "/" {
				base += "/"
			}
			base += text
		}
		return strings.TrimPrefix(path.Clean(base), "/"), true
	case External:
	default:
		return "", false
	}
	first := func() (string, bool) {
		if len(v.Kids) == 0 {
			return "", false
		}
		return e.pathIn(v.Kids[0], env, depth+1)
	}
	switch v.Text {
	case "__file__", "__filename", "__FILE__", "import.meta.url", "import.meta.filename", "import.meta.path":
		return v.At.File, true
	case "__dirname", "__DIR__", "__dir__", "import.meta.dirname", "import.meta.dir":
		return dirOf(v.At.File), true
	case "process.cwd()", "os.getcwd()", "pathlib.Path.cwd()", "Deno.cwd()":
		return e.Dir, true
	case "os.path.abspath()", "os.path.realpath()", "os.path.normpath()", "os.fspath()", "str()", "realpath()", "File.realpath()", "File.new()", "url.fileURLToPath()", "path.normalize()":
		return first()
	case "os.path.dirname()", "path.dirname()", "File.dirname()", "dirname()":
		p, ok := first()
		p = dirOf(p)
		if len(v.Kids) > 1 && v.Kids[1].Kind == Num { // so many levels up
			for range min(int(v.Kids[1].Num)-1, 32) {
				p = dirOf(p)
			}
		}
		return p, ok
	case "File.expand_path()": // from a folder that stands behind
		if len(v.Kids) == 2 {
			p, ok := e.pathIn(v.Kids[1], env, depth+1)
			if !ok {
				return "", false
			}
			return under(p, v.Kids[:1])
		}
		return first()
	case "pathlib.Path()", "pathlib.PurePath()", "os.path.join()", "path.join()", "path.resolve()", "path.posix.join()", "File.join()":
		if len(v.Kids) == 0 {
			return e.Dir, v.Text == "pathlib.Path()"
		}
		p, ok := first()
		if !ok {
			return "", false
		}
		return under(p, v.Kids[1:])
	case "URL()": // beside the file that the second argument names
		if len(v.Kids) == 2 && v.Kids[0].Kind == Str {
			if p, ok := e.pathIn(v.Kids[1], env, depth+1); ok {
				return under(dirOf(p), v.Kids[:1])
			}
		}
		return "", false
	}
	if strings.HasSuffix(v.Text, "/") && len(v.Kids) == 2 { // BASE / "conf.yml"
		p, ok := first()
		if !ok {
			return "", false
		}
		return under(p, v.Kids[1:])
	}
	if !strings.HasPrefix(v.Text, "pathlib.Path") || v.Recv == nil {
		return "", false
	}
	if strings.HasSuffix(v.Text, ".parent") {
		p, ok := e.pathIn(v.Recv, env, depth+1)
		return dirOf(p), ok
	}
	for _, end := range []string{".resolve()", ".absolute()", ".expanduser()", ".joinpath()"} {
		if strings.HasSuffix(v.Text, end) {
			p, ok := e.pathIn(v.Recv.Recv, env, depth+1)
			if !ok {
				return "", false
			}
			return under(p, v.Kids)
		}
	}
	return "", false
}

// commandOption gives a parameter of a function that a decorator makes a
// command of: from the arguments, the variable of the option, its default
// (documentation of click 8, "Options"; of Typer 0.20, "CLI Options" and
// "CLI Arguments with Environment Variables"). Functions with other decorators
// get their parameters from whoever calls them.
func (e *Eval) commandOption(b *code.Binding, s *code.Scope) *Value {
	fn := b.Func
	if s.File.Lang != code.Python || fn == nil || fn.Flag&code.Method != 0 {
		return nil
	}
	for _, d := range fn.Kids[min(2, len(fn.Kids)):] {
		if !d.Is(code.Call) {
			continue
		}
		kind := e.Expr(d.Kid(0), s.Parent).Text
		if kind != "click.option" && kind != "click.argument" {
			continue
		}
		o := e.optionOf(d, s)
		if destination(o.flags) == b.Name {
			if kind == "click.option" { // the name that it has in the program is no flag
				o.flags = slices.DeleteFunc(o.flags, func(f string) bool { return !strings.HasPrefix(f, "-") })
			}
			if len(o.env) == 0 {
				o.env = e.clickVariable(fn, b.Name, s)
			}
			return e.optionValue(o, s)
		}
	}
	if !e.typer(fn, s) {
		return nil
	}
	p := fn.Kid(0).Kid(b.Index)
	o := declaredOption{at: p, number: p.Alias == "int", truth: p.Alias == "bool", def: p.Kid(0)}
	plain := true
	for _, call := range []*code.Node{p.Kid(0), p.Kid(2)} {
		if !call.Is(code.Call) {
			continue
		}
		kind := e.Expr(call.Kid(0), s.Parent).Text
		if kind != "typer.Option" && kind != "typer.Argument" {
			continue
		}
		inside := e.optionOf(call, s)
		o.flags, o.env, plain = inside.flags, inside.env, false
		if call == p.Kid(0) { // the first argument is the default
			o.def = inside.def
			if first := call.Kid(1); first != nil && !first.Is(code.Keyword) {
				o.def = first
				if first.Is(code.String) {
					o.flags = o.flags[1:]
				}
			}
		}
		if kind == "typer.Argument" {
			o.flags = []string{b.Name}
		}
	}
	switch {
	case plain && o.def == nil:
		o.flags = []string{b.Name}
	case len(o.flags) == 0:
		o.flags = []string{"--" + strings.ReplaceAll(b.Name, "_", "-")}
	}
	return e.optionValue(o, s)
}

// clickVariable is the variable that an option has by itself, where the program
// gives them a prefix: PREFIX_COMMAND_OPTION (documentation of click 8, "Options",
// "Values from Environment Variables").
func (e *Eval) clickVariable(fn *code.Node, name string, s *code.Scope) []*code.Node {
	var prefix, at *code.Node
	s.File.Body.Walk(func(k *code.Node) bool {
		if (k.Is(code.Keyword) || k.Is(code.Pair)) && k.Name == "auto_envvar_prefix" && k.Kid(0).Is(code.String) {
			prefix, at = k.Kids[0], k.Kids[0]
		}
		return prefix == nil
	})
	for _, f := range e.Loader.Loaded() { // where the group is called
		for _, site := range f.Calls {
			if prefix != nil {
				break
			}
			for _, k := range site.Node.Kids[1:] {
				if k.Is(code.Keyword) && k.Name == "auto_envvar_prefix" && k.Kid(0).Is(code.String) {
					prefix, at = k.Kids[0], fn.Kid(min(2, len(fn.Kids)-1))
				}
			}
		}
	}
	if prefix == nil {
		return nil
	}
	words := []string{prefix.Name}
	for _, d := range fn.Kids[min(2, len(fn.Kids)):] {
		if callee := d.Kid(0); d.Is(code.Call) && callee.Is(code.Member) && callee.Name == "command" && e.Expr(callee.Kid(0), s.Parent).Kind == Func {
			word := fn.Name
			if d.Kid(1).Is(code.String) {
				word = d.Kids[1].Name
			}
			words = append(words, word)
		}
	}
	text := strings.ReplaceAll(strings.ToUpper(strings.Join(append(words, name), "_")), "-", "_")
	return []*code.Node{{Kind: code.String, Name: text, Off: at.Off, End: at.End}}
}

// declaredOption is an option or an argument of a command line, as a library declares
// it.
type declaredOption struct {
	flags         []string
	def           *code.Node
	env           []*code.Node
	number, truth bool
	between       []*Value // the least and the most that it may be
	at            *code.Node
}

// optionOf reads what a call declares by its words and keywords.
func (e *Eval) optionOf(call *code.Node, s *code.Scope) declaredOption {
	o := declaredOption{at: call}
	for _, a := range call.Args() {
		switch {
		case a.Is(code.String):
			o.flags = append(o.flags, a.Name)
		case !a.Is(code.Keyword):
		case a.Name == "default":
			o.def = a.Kid(0)
		case a.Name == "type":
			switch k := e.Expr(a.Kid(0), s.Parent); k.Text {
			case "int", "click.INT", "click.IntRange()":
				o.number, o.between = true, k.Kids
			}
		case a.Name == "is_flag":
			o.truth = true
		case a.Name == "envvar":
			a.Walk(func(k *code.Node) bool {
				if k.Is(code.String) {
					o.env = append(o.env, k)
				}
				return true
			})
		}
	}
	return o
}

func (e *Eval) optionValue(o declaredOption, s *code.Scope) *Value {
	v := &Value{Kind: Null, At: s.File.At(o.at)}
	if o.def != nil {
		if v = e.Expr(o.def, s.Parent); v.Kind == Func { // which is called for it
			v = e.invoke(v, nil, nil, nil)
		}
	}
	number := o.number || v.Kind == Num
	for _, env := range slices.Backward(o.env) { // an empty variable counts as not set
		v = op("||", true, v.At, &Value{Kind: Env, Text: env.Name, Unset: ReadsNull, At: s.File.At(env)}, v)
	}
	if o.truth {
		for _, a := range e.Args {
			if a.Kind == Str && strings.HasPrefix(a.Text, "--no-") && slices.Contains(o.flags, "--"+a.Text[5:]) {
				return boolean(false, a.At)
			}
			for _, f := range o.flags {
				on, off, _ := strings.Cut(f, "/")
				if a.Kind == Str && (a.Text == on || a.Text == off && off != "") {
					return boolean(a.Text == on, a.At)
				}
			}
		}
		return v
	}
	if given := e.given(o.flags); given != nil {
		v = given
	}
	switch {
	case number && (o.def == nil || o.def.Is(code.Null)):
		v = &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{op("nothing", true, v.At, v), v, op("int", true, v.At, v)}}
	case number:
		v = op("int", true, v.At, v)
	}
	for i, limit := range o.between[:min(2, len(o.between))] { // documentation of click 8, IntRange
		if limit.Kind == Num {
			none := &Value{Kind: Env, Text: "\x00", Unset: Raises, At: v.At}
			v = &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{op([]string{">=", "<="}[i], true, v.At, v, limit), v, none}}
		}
	}
	return v.with(Step{s.File.At(o.at), s.File.Text(o.at)})
}

// typer tells a function that Typer runs as a command.
func (e *Eval) typer(fn *code.Node, s *code.Scope) bool {
	for _, d := range fn.Kids[min(2, len(fn.Kids)):] {
		if !d.Is(code.Call) {
			continue
		}
		switch e.Expr(d.Kid(0), s.Parent).Text {
		case "typer.Typer().command", "typer.Typer().callback":
			return true
		}
	}
	for _, site := range e.calls("run") {
		if site.Node.Kid(1).Is(code.Name) && site.Node.Kids[1].Name == fn.Name && site.Scope.File == s.File && e.Expr(site.Node.Kid(0), site.Scope).Text == "typer.run" {
			return true
		}
	}
	return false
}
