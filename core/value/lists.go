package value

import (
	"path"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// argumentLists are the lists that hold the command line, with how many of its
// elements come before the program's own arguments.
var argumentLists = map[string]int{"process.argv": 2, "sys.argv": 1, "Deno.args": 0, "Bun.argv": 2}

// argumentList is the whole command line as a list; nil for any other value.
func (e *Eval) argumentList(v *Value, at place.Span) *Value {
	if v == nil || v.Kind != External {
		return nil
	}
	skip, ok := argumentLists[v.Text]
	if !ok {
		return nil
	}
	list := &Value{Kind: List, At: at}
	for i := range skip {
		name := e.Main
		if i < skip-1 {
			name = "node"
		}
		list.Kids = append(list.Kids, text(name, at))
	}
	for _, a := range e.Args {
		if a.Kind != Str { // without quotes an empty variable leaves no argument
			a = op("||", false, a.At, a, &Value{Kind: Undef, At: a.At})
		}
		list.Kids = append(list.Kids, a)
	}
	return list
}

// listMethod evaluates a method of a list whose elements are all known
// (ECMA-262, 23.1.3; Python's library reference, "Sequence Types"); nil for
// methods that are not read.
func (e *Eval) listMethod(list *Value, name string, args []*Value, c *context, py bool, at place.Span) *Value {
	// asked is what a function says of each element.
	asked := func(i int) *Value {
		if len(args) == 0 || args[0].Kind != Func {
			if len(args) == 1 && args[0].Text == "Boolean" {
				return list.Kids[i]
			}
			return nil
		}
		return e.invoke(args[0], []*Value{list.Kids[i], number(float64(i), at)}, nil, c)
	}
	known := func(v *Value) (yes, ok bool) {
		if v == nil || len(v.Variables()) > 0 {
			return false, false
		}
		o := v.Under(Environ{})
		if !o.Known() {
			return false, false
		}
		return o.Truth(py)
	}
	switch name {
	case "indexOf", "index", "lastIndexOf":
		if len(args) != 1 || args[0].Kind != Str {
			return nil
		}
		at1 := -1
		for i, k := range list.Kids {
			if k.Kind != Str && k.Kind != Num && k.Kind != Bool && k.Kind != Null && k.Kind != Undef && (at1 < 0 || name == "lastIndexOf") {
				return nil
			}
			if k.Kind == Str && k.Text == args[0].Text && (at1 < 0 || name == "lastIndexOf") {
				at1 = i
			}
		}
		if at1 < 0 && name == "index" {
			return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
		}
		return number(float64(at1), at)
	case "includes", "has":
		if len(args) == 1 {
			return op("in", py, at, args[0], list)
		}
	case "at":
		if len(args) == 1 && args[0].Kind == Num {
			i := int(args[0].Num)
			if i < 0 {
				i += len(list.Kids)
			}
			if i >= 0 && i < len(list.Kids) {
				return list.Kids[i]
			}
			return &Value{Kind: Undef, At: at}
		}
	case "slice":
		from, to := 0, len(list.Kids)
		for i, a := range args {
			if a.Kind != Num {
				return nil
			}
			n := int(a.Num)
			if n < 0 {
				n = max(0, n+len(list.Kids))
			}
			if i == 0 {
				from = min(n, len(list.Kids))
			} else {
				to = min(n, len(list.Kids))
			}
		}
		return &Value{Kind: List, At: at, Py: list.Py, Kids: append([]*Value(nil), list.Kids[from:max(from, to)]...)}
	case "find", "findIndex":
		v := &Value{Kind: Undef, At: at}
		if name == "findIndex" {
			v = number(-1, at)
		}
		for i := len(list.Kids) - 1; i >= 0; i-- {
			test := asked(i)
			if test == nil {
				return nil
			}
			hit := list.Kids[i]
			if name == "findIndex" {
				hit = number(float64(i), at)
			}
			if yes, ok := known(test); !ok {
				v = &Value{Kind: Cond, At: at, Kids: []*Value{test, hit, v}}
			} else if yes {
				v = hit
			}
		}
		return v
	case "some", "every":
		word, v := "||", boolean(false, at)
		if name == "every" {
			word, v = "&&", boolean(true, at)
		}
		for i := len(list.Kids) - 1; i >= 0; i-- {
			test := asked(i)
			if test == nil {
				return nil
			}
			v = op(word, false, at, op("Boolean", false, at, test), v)
		}
		return v
	case "filter":
		out := &Value{Kind: List, At: at, Py: list.Py}
		for i := range list.Kids {
			yes, ok := known(asked(i))
			if !ok {
				return nil
			}
			if yes {
				out.Kids = append(out.Kids, list.Kids[i])
			}
		}
		return out
	case "reduce":
		if len(args) == 0 || args[0].Kind != Func || len(list.Kids) == 0 && len(args) < 2 || len(list.Kids) > maxTurns {
			return nil
		}
		from, acc := 0, (*Value)(nil)
		if len(args) > 1 {
			acc = args[1]
		} else {
			from, acc = 1, list.Kids[0]
		}
		for i := from; i < len(list.Kids); i++ {
			acc = e.invoke(args[0], []*Value{acc, list.Kids[i], number(float64(i), at)}, nil, c)
		}
		return acc
	case "map":
		out := &Value{Kind: List, At: at, Py: list.Py}
		for i := range list.Kids {
			v := asked(i)
			if len(args) == 1 && args[0].Kind == External {
				if name, ok := conversions[args[0].Text]; ok {
					v = op(name, py, at, list.Kids[i])
				}
			}
			if v == nil {
				return nil
			}
			out.Kids = append(out.Kids, v)
		}
		return out
	case "join":
		if py || len(args) > 1 || len(args) == 1 && args[0].Kind != Str {
			return nil
		}
		sep := text(",", at)
		if len(args) == 1 {
			sep = args[0]
		}
		var parts []*Value
		for i, k := range list.Kids {
			if i > 0 {
				parts = append(parts, sep)
			}
			parts = append(parts, k)
		}
		return joined(parts, at)
	}
	return nil
}

// Element is an element of a list by its place, also where a condition decides
// between lists; nil where there is none.
func (v *Value) Element(i int) *Value {
	if v == nil {
		return nil
	}
	if (v.Kind == Cond || v.Kind == Op) && v.choices(maxSides) >= maxSides {
		return nil
	}
	switch {
	case (v.Kind == List || v.Kind == Object && v.Text == "tuple") && i < len(v.Kids):
		return v.Kids[i]
	case v.Kind == Cond && len(v.Kids) == 3:
		a, b := v.Kids[1].Element(i), v.Kids[2].Element(i)
		if a != nil && b != nil {
			return &Value{Kind: Cond, Py: v.Py, At: v.At, Steps: v.Steps, Kids: []*Value{v.Kids[0], a, b}}
		}
	case v.Kind == Op && (v.Text == "||" || v.Text == "??" || v.Text == "catch") && len(v.Kids) == 2:
		a, b := v.Kids[0].Element(i), v.Kids[1].Element(i)
		if a != nil && b != nil {
			w := *v
			w.Kids = []*Value{a, b}
			return &w
		}
	}
	return nil
}

// indexed tells names that are places in a list.
func indexed(name string) (int, bool) {
	i, err := strconv.Atoi(name)
	return i, err == nil && i >= 0
}

// pastEnd tells languages in which a place past the end of a list gives
// nothing, and no error.
func pastEnd(l code.Language) bool {
	return javascript(l) || l == code.Ruby || l == code.PHP
}

// template is a name with one part that the environment decides: what stands
// before it and after.
type template struct {
	before, after string
	part          *Value
}

// templateOf reads the name of a file of which one part is decided while the
// program runs: `./config/${env}.json`, seen from a folder.
func (e *Eval) templateOf(v *Value, from string) (template, bool) {
	var t template
	add := func(k *Value) bool {
		switch {
		case k.Kind == Str && t.part == nil:
			t.before += k.Text
		case k.Kind == Str:
			t.after += k.Text
		case t.part == nil && len(k.Variables()) > 0:
			t.part = k
		default:
			return false
		}
		return true
	}
	switch {
	case v.Kind == Op && v.Text == "concat" || v.Kind == Op && v.Text == "+" && len(v.Kids) == 2:
		for i, k := range v.Kids {
			if i == 0 && k.Kind == External {
				p, ok := e.pathOf(k, 0)
				if !ok {
					return t, false
				}
				t.before, from = p, ""
				continue
			}
			if k.Kind == Op && (k.Text == "concat" || k.Text == "+") && len(k.Kids) > 1 && len(k.Kids[0].Variables()) == 0 && i == 0 {
				inner, ok := e.templateOf(k, from)
				if !ok {
					return t, false
				}
				t, from = inner, ""
				continue
			}
			if !add(k) {
				return t, false
			}
		}
	case v.Kind == External && (v.Text == "path.join()" || v.Text == "path.resolve()" || v.Text == "os.path.join()" || strings.HasSuffix(v.Text, "/") && len(v.Kids) == 2):
		p, ok := e.pathOf(v.Kids[0], 0)
		if !ok {
			return t, false
		}
		t.before, from = p, ""
		for _, k := range v.Kids[1:] {
			if t.before != "" && !strings.HasSuffix(t.before, "/") && t.part == nil {
				t.before += "/"
			} else if t.part != nil {
				t.after += "/"
			}
			if k.Kind == Op && k.Text == "concat" {
				for _, x := range k.Kids {
					if !add(x) {
						return t, false
					}
				}
			} else if !add(k) {
				return t, false
			}
		}
	default:
		return t, false
	}
	if from != "" {
		t.before = from + "/" + t.before
	}
	dir, base := "", t.before
	if i := strings.LastIndexByte(t.before, '/'); i >= 0 {
		dir, base = t.before[:i], t.before[i+1:]
	}
	if dir = path.Clean(dir); dir == "." {
		dir = ""
	} else {
		dir += "/"
	}
	t.before = dir + base
	return t, t.part != nil && !strings.Contains(t.after, "/")
}

// choices are the files of the tree that a template may name, with what the
// part that is decided comes to for each.
func (t template) choices(l Loader, extensions ...string) (keys, files []string) {
	dir, base := "", t.before
	if i := strings.LastIndexByte(t.before, '/'); i >= 0 {
		dir, base = t.before[:i], t.before[i+1:]
	}
	for _, f := range l.Beside(dir) {
		name := f[strings.LastIndexByte(f, '/')+1:]
		rest, ok := strings.CutPrefix(name, base)
		if !ok {
			continue
		}
		for _, end := range append([]string{""}, extensions...) {
			if key, ok := strings.CutSuffix(rest, t.after+end); ok && key != "" && len(keys) < 24 && (end != "" || t.after != "" || !strings.Contains(key, ".")) {
				keys, files = append(keys, key), append(files, f)
				break
			}
		}
	}
	return keys, files
}

// oneOf is a value that the part of a template decides: one for each file.
func (t template) oneOf(keys []string, values []*Value, at place.Span) *Value {
	v := unknown("a file that is named while the program runs", at)
	for i := len(keys) - 1; i >= 0; i-- {
		test := op("===", false, at, t.part, text(keys[i], at))
		v = &Value{Kind: Cond, At: at, Kids: []*Value{test, values[i], v}}
	}
	return v
}

// requiredBy gives what require of a name gives that is made of parts.
func (e *Eval) requiredBy(v *Value, n *code.Node, s *code.Scope) *Value {
	from := dirOf(s.File.Name)
	relative := func(p string) string {
		up := "./"
		if from != "" {
			up += strings.Repeat("../", strings.Count(from, "/")+1)
		}
		return up + p
	}
	if v.Kind == Str {
		return e.required(v.Text, n, s)
	}
	if p, ok := e.pathOf(v, 0); ok {
		return e.required(relative(p), n, s)
	}
	t, ok := e.templateOf(v, from)
	if !ok {
		return nil
	}
	keys, files := t.choices(e.Loader, ".js", ".cjs", ".mjs", ".ts", ".json")
	if len(keys) == 0 {
		return nil
	}
	var values []*Value
	for _, f := range files {
		values = append(values, e.required(relative(f), n, s))
	}
	return t.oneOf(keys, values, s.File.At(n))
}

// importedBy is what importlib.import_module gives for a name that is made: a
// module, or one of several that the environment chooses between; nil where it
// is not known.
func (e *Eval) importedBy(name *Value, s *code.Scope, at place.Span) *Value {
	module := func(p string) *Value {
		if to, ok := e.Loader.Resolve(s.File, p, ""); ok && e.Loader.File(to) != nil {
			return (&Value{Kind: Module, Text: to, At: at}).with(Step{at, "imports " + to})
		}
		return nil
	}
	if name.Kind == Str {
		return module(name.Text)
	}
	t, ok := e.templateOf(name, "")
	if !ok || t.part == nil {
		return nil
	}
	t.before = strings.ReplaceAll(t.before, ".", "/")
	keys, files := t.choices(e.Loader, ".py")
	if len(keys) == 0 {
		return nil
	}
	var values []*Value
	for _, f := range files {
		values = append(values, (&Value{Kind: Module, Text: f, At: at}).with(Step{at, "imports " + f}))
	}
	return t.oneOf(keys, values, at)
}

// enumeration reports whether a class of Python is an Enum (its documentation,
// "enum").
func (e *Eval) enumeration(class *Value) bool {
	if class.ref == nil || class.ref.node.Kid(0) == nil {
		return false
	}
	for _, b := range class.ref.node.Kid(0).Kids {
		switch e.Expr(b, class.ref.scope).Text {
		case "enum.Enum", "enum.IntEnum", "enum.StrEnum":
			return true
		}
	}
	return false
}

// openedData is what a call that opens a file of data gives, or one of several
// that the name chooses between; nil for all else.
func (e *Eval) openedData(v *Value, at place.Span) *Value {
	if d := e.opened(v); d != nil {
		return FromDocument(d).with(Step{at, "reads " + d.At().File})
	}
	for strings.HasSuffix(v.Text, ".read()") && v.Recv != nil && v.Recv.Recv != nil {
		v = v.Recv.Recv
	}
	var name *Value
	switch {
	case v.Kind != External:
		return nil
	case opening[v.Text] && len(v.Kids) > 0:
		name = v.Kids[0]
	case (strings.HasSuffix(v.Text, ".read_text()") || strings.HasSuffix(v.Text, ".open()")) && v.Recv != nil && v.Recv.Recv != nil:
		if name = v.Recv.Recv; name.Text == "pathlib.Path()" && len(name.Kids) == 1 {
			name = name.Kids[0]
		}
	default:
		return nil
	}
	return e.fromNamed(name, at)
}

// maxTurns is how many turns of a loop are followed.
const maxTurns = 16

// turns gives what a loop over a list that is known returns, and what follows it
// where it returns nothing.
func (e *Eval) turns(n *code.Node, rest func() *Value, s *code.Scope, c *context) *Value {
	why := unknown("returned from inside a loop", s.File.At(n))
	if c == nil {
		return why
	}
	rounds, ok := e.rounds(n, s, c)
	if !ok {
		return why
	}
	var turn func(i int) *Value
	turn = func(i int) *Value {
		if i == len(rounds) {
			return rest()
		}
		return e.branch(n.Kids[2], s, rounds[i], once(func() *Value { return turn(i + 1) }))
	}
	if v := turn(0); v != nil {
		return v
	}
	return why
}

// tuple is an object of a class that namedtuple makes: by its fields and by
// place; nil where the fields are not known.
func tuple(class *Value, args []*Value, keys map[string]*Value, at place.Span) *Value {
	if len(class.Kids) < 2 {
		return nil
	}
	var names []string
	switch f := class.Kids[1]; f.Kind {
	case Str:
		names = strings.FieldsFunc(f.Text, func(r rune) bool { return r == ' ' || r == ',' })
	case List:
		for _, k := range f.Kids {
			names = append(names, k.literal())
		}
	}
	o := &Value{Kind: Object, Text: "tuple", At: at}
	for i, name := range names {
		v := keys[name]
		if v == nil && i < len(args) {
			v = args[i]
		}
		if v == nil {
			v = unknown("the field "+name+" of a tuple", at)
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, v)
	}
	if len(names) == 0 {
		return nil
	}
	return o
}

// entries evaluates the functions of Object that turn objects into lists and
// back (ECMA-262, 20.1.2); nil where what they are given is not known.
func entries(name string, args []*Value, at place.Span) *Value {
	if len(args) != 1 {
		return nil
	}
	from := args[0]
	if name == "Object.fromEntries" {
		if from.Kind != List {
			return nil
		}
		o := &Value{Kind: Object, At: at}
		for _, pair := range from.Kids {
			k, v := pair.Element(0), pair.Element(1)
			if k == nil || v == nil || k.Kind != Str {
				return nil
			}
			o.Keys, o.Kids = append(o.Keys, k.Text), append(o.Kids, v)
		}
		return o
	}
	if from.Kind != Object {
		return nil
	}
	list := &Value{Kind: List, At: at}
	for i, k := range from.Keys {
		if k == "..." {
			return nil
		}
		key := text(k, from.Kids[i].At)
		switch name {
		case "Object.keys":
			list.Kids = append(list.Kids, key)
		case "Object.values":
			list.Kids = append(list.Kids, from.Kids[i])
		default:
			list.Kids = append(list.Kids, &Value{Kind: List, At: at, Kids: []*Value{key, from.Kids[i]}})
		}
	}
	return list
}

// item is what a comprehension makes of one element, and the condition under
// which it does; nil for none.
type item struct{ test, key, value *Value }

// items goes through a comprehension with one loop over a list or a dictionary
// that is known (Python's reference, 6.2.4); ok is false for any other.
func (e *Eval) items(n *code.Node, s *code.Scope, c *context) (list []item, ok bool) {
	if len(n.Kids) != 3 && len(n.Kids) != 4 {
		return nil, false
	}
	target, over := n.Kids[1], e.expr(n.Kids[2], s, c)
	if over.Kind == Object {
		if over = entries("Object.keys", []*Value{over}, over.At); over == nil {
			return nil, false
		}
	}
	if over.Kind != List || len(over.Kids) > maxTurns*2 {
		return nil, false
	}
	for _, x := range over.Kids {
		inner := &context{up: c, loops: map[string]*Value{}}
		if c != nil {
			inner.fn, inner.args, inner.keys, inner.this = c.fn, c.args, c.keys, c.this
		}
		switch {
		case target.Is(code.Name):
			inner.loops[target.Name] = x
		case target.Is(code.Array):
			for i, k := range target.Kids {
				v := x.Element(i)
				if !k.Is(code.Name) || v == nil {
					return nil, false
				}
				inner.loops[k.Name] = v
			}
		default:
			return nil, false
		}
		var it item
		if len(n.Kids) == 4 {
			it.test = e.expr(n.Kids[3], s, inner)
		}
		if p := n.Kids[0]; p.Is(code.Pair) {
			it.key, it.value = text(p.Name, s.File.At(p)), e.expr(p.Kid(0), s, inner)
			if p.Kid(1) != nil {
				it.key = e.expr(p.Kid(1), s, inner)
			}
		} else {
			it.value = e.expr(p, s, inner)
		}
		list = append(list, it)
	}
	return list, true
}

// comprehension is the list or the dictionary that a comprehension makes; nil
// where it is not known.
func (e *Eval) comprehension(n *code.Node, s *code.Scope, c *context) *Value {
	list, ok := e.items(n, s, c)
	if !ok {
		return nil
	}
	v := &Value{Kind: List, At: s.File.At(n), Py: true}
	if n.Kids[0].Is(code.Pair) {
		v.Kind = Object
	}
	for _, it := range list {
		if it.test != nil {
			o := it.test.Under(Environ{})
			yes, known := o.Truth(true)
			if !known || len(it.test.Variables()) > 0 {
				return nil
			}
			if !yes {
				continue
			}
		}
		if v.Kind == Object {
			k := it.key.Under(Environ{})
			if len(it.key.Variables()) > 0 || !k.Known() {
				return nil
			}
			v.Keys = append(v.Keys, k.String())
		}
		v.Kids = append(v.Kids, it.value)
	}
	return v
}

// firstOf is next() over a comprehension: its first element, or what is given
// besides.
func (e *Eval) firstOf(n *code.Node, args []*Value, s *code.Scope, c *context) *Value {
	list, ok := e.items(n.Kid(1), s, c)
	if !ok {
		return nil
	}
	at := s.File.At(n)
	v := &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	if len(args) > 1 {
		v = args[1]
	}
	for i := len(list) - 1; i >= 0; i-- {
		if list[i].test == nil {
			v = list[i].value
			continue
		}
		v = &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{list[i].test, list[i].value, v}}
	}
	return v
}
