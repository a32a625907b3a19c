package trace

import (
	"math"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/source"
	"ubique/core/value"
)

// What programs of Go do (The Go Programming Language Specification, 1.26): a
// package is all files of a folder, a structure is an object of its type, and
// several results are a list. Pointers are the objects themselves.

// goPackage is a package of the tree.
type goPackage struct {
	top     *scope
	types   map[string]*class
	methods map[string]map[string]*function // by the type
	inits   []*function
}

// runGo loads the package of a file and runs its main.
func (m *machine) runGo(file string) error {
	p, err := m.goLoad(source.Dir(file))
	if err != nil {
		return err
	}
	c := p.top.vars["main"]
	if c == nil {
		return giveUp("there is no main")
	}
	_, err = m.call(c.v, undefined, nil, nil, spot{m.main, m.main.Body})
	return err
}

// goLoad loads a package: what it imports first, then its own functions init.
func (m *machine) goLoad(dir string) (*goPackage, error) {
	if p := m.goPackages[dir]; p != nil {
		return p, nil
	}
	if m.depth++; m.depth > maxDepth {
		return nil, giveUp("packages that import each other")
	}
	defer func() { m.depth-- }()
	p := &goPackage{types: map[string]*class{}, methods: map[string]map[string]*function{}}
	m.goPackages[dir] = p
	p.top = &scope{vars: map[string]*cell{}, own: true, this: undefined}
	for _, name := range m.e.Loader.Beside(dir) {
		if !strings.HasSuffix(name, ".go") || strings.HasSuffix(name, "_test.go") {
			continue
		}
		f := m.e.Loader.File(name)
		if f == nil || f.Body == nil {
			return nil, giveUp("%s could not be read", name)
		}
		mod := &module{file: f, exports: newObject(), pkg: p}
		s := &scope{vars: map[string]*cell{}, up: p.top, module: mod, static: f.Top, this: undefined}
		mod.top = s
		m.modules[name] = mod
		if p.top.module == nil {
			p.top.module, p.top.static = mod, f.Top
		}
		for _, n := range f.Body.Kids {
			switch {
			case n.Is(code.Import):
				if err := m.goImport(n, s); err != nil {
					return nil, err
				}
			case n.Is(code.Func) && n.Flag&code.Method != 0:
				if p.methods[n.Alias] == nil {
					p.methods[n.Alias] = map[string]*function{}
				}
				p.methods[n.Alias][n.Name] = &function{name: n.Name, node: n, scope: s}
			case n.Is(code.Func) && n.Name == "init":
				p.inits = append(p.inits, &function{name: n.Name, node: n, scope: s})
			case n.Is(code.Func):
				p.top.declare(n.Name, &function{name: n.Name, node: n, scope: s})
			case n.Is(code.Class):
				p.types[n.Name] = &class{name: n.Name, node: n, scope: s, pkg: p, statics: newObject(), methods: newObject()}
			case n.Is(code.Bind) && n.Kid(0).Is(code.Name):
				p.top.vars[n.Kids[0].Name] = &cell{lazy: n.Kid(1), scope: s}
			}
		}
	}
	for _, f := range p.inits {
		if _, err := m.call(f, undefined, nil, nil, spot{f.scope.module.file, f.node}); err != nil {
			return nil, err
		}
	}
	return p, nil
}

func (m *machine) goImport(n *code.Node, s *scope) error {
	name := n.Kids[0].Alias
	to, ok := m.e.Loader.Resolve(s.module.file, n.Name, "")
	if !ok {
		s.declare(name, m.package1(value.Library(n.Name)))
		return nil
	}
	p, err := m.goLoad(source.Dir(to))
	if err != nil {
		return err
	}
	s.declare(name, p)
	return nil
}

// goType is a type of a structure by the name that a file gives it: one of the
// tree, or a class that stands for one from outside.
func (m *machine) goType(name string, s *scope) *class {
	pkg, typ, ok := strings.Cut(name, ".")
	if !ok {
		for x := s; x != nil; x = x.up {
			if x.module != nil && x.module.pkg != nil {
				if c := x.module.pkg.types[name]; c != nil {
					return c
				}
			}
		}
		return &class{name: name, builtin: true, statics: newObject(), methods: newObject()}
	}
	if c := s.find(pkg); c != nil {
		switch v := c.v.(type) {
		case *goPackage:
			if t := v.types[typ]; t != nil {
				return t
			}
		case *opaque:
			return &class{name: v.path + "." + typ, builtin: true, outside: true, statics: newObject(), methods: newObject()}
		}
	}
	return &class{name: name, builtin: true, outside: true, statics: newObject(), methods: newObject()}
}

// goLiteral is a structure or a map that is written out.
func (m *machine) goLiteral(n *code.Node, s *scope) (any, error) {
	o := newObject()
	if n.Alias == "" || n.Name != "" {
		o.dict, o.holds = true, n.Name
	} else {
		o.class = m.goType(n.Alias, s)
	}
	for _, p := range n.Kids {
		name, v, err := m.pair(p, s)
		if err != nil {
			return nil, err
		}
		o.set(name, v)
	}
	return o, nil
}

// goPlaced is a structure whose fields are given by their places.
func (m *machine) goPlaced(n *code.Node, s *scope) (any, error) {
	c := m.goType(n.Alias, s)
	o := newObject()
	o.class = c
	if c.node == nil {
		return nil, giveUp("a structure whose fields are not known")
	}
	i := 0
	for _, b := range c.node.Kid(1).Kids {
		if !b.Is(code.Bind) || i >= len(n.Kids) {
			continue
		}
		v, err := m.eval(n.Kids[i], s)
		if err != nil {
			return nil, err
		}
		o.set(b.Kid(0).Name, v)
		i++
	}
	return o, nil
}

// goField is a field or a method of an object of Go.
func (m *machine) goField(o *object, name string, s *scope) (any, error) {
	if c := o.cells[name]; c != nil {
		return m.read(c)
	}
	if o.dict {
		return m.goZero(o.holds, false, s), nil
	}
	c := o.class
	if c == nil {
		return nil, giveUp("the field %s", name)
	}
	if c.node == nil {
		return &opaque{path: c.name + "." + name, self: o}, nil
	}
	if c.pkg != nil {
		if f := c.pkg.methods[c.name][name]; f != nil {
			w := *f
			w.this, w.bound = o, true
			return &w, nil
		}
	}
	for _, b := range c.node.Kid(1).Kids {
		if b.Is(code.Bind) && b.Kid(0).Name == name {
			v := any(nil)
			if inner := b.Kid(3); inner != nil {
				sub := newObject()
				sub.class = &class{name: name, node: &code.Node{Kind: code.Class, Name: name, Kids: []*code.Node{{Kind: code.Array}, inner}}, scope: c.scope, statics: newObject(), methods: newObject()}
				v = sub
			} else {
				v = m.goZero(b.Alias, b.Flag&code.Address != 0, c.scope)
			}
			o.set(name, v)
			return v, nil
		}
	}
	for _, b := range c.node.Kid(1).Kids { // of what is embedded
		if !b.Is(code.Bind) || b.Alias[strings.LastIndexByte(b.Alias, '.')+1:] != b.Kid(0).Name {
			continue
		}
		in, err := m.goField(o, b.Kid(0).Name, s)
		if err != nil {
			return nil, err
		}
		if out, ok := in.(*opaque); ok && out.path != "" && strings.Contains(out.path, "()") {
			return m.opaqueKey(out, name)
		}
		if sub, ok := in.(*object); ok && sub != o && (sub.class == nil || sub.class.node != nil || sub.class.outside) {
			if v, err := m.goField(sub, name, s); err == nil {
				return v, nil
			}
		}
	}
	return nil, giveUp("the field %s of %s", name, c.name)
}

// goZero is the value of a variable of a type that is only declared.
func (m *machine) goZero(typ string, pointer bool, s *scope) any {
	if pointer {
		return nil
	}
	switch typ {
	case "string":
		return ""
	case "int", "int8", "int16", "int32", "int64", "uint", "uint8", "uint16", "uint32", "uint64", "byte", "rune":
		return integer(0)
	case "float64", "float32":
		return 0.0
	case "bool":
		return false
	case "", "error", "any", "[]":
		return nil
	}
	c := m.goType(typ, s)
	if c.node == nil && !c.outside {
		return ""
	}
	o := newObject()
	o.class = c
	return o
}

// goStatements runs statements of Go; several that come from one with several
// targets run as one.
func (m *machine) goStatements(kids []*code.Node, s *scope) error {
	in := s
	for i := 0; i < len(kids); i++ {
		n := kids[i]
		head := n.Alias == code.Head && (n.Is(code.Bind) || n.Is(code.ExprStmt))
		if head && in == s {
			in = s.inner()
		}
		j := i + 1
		for j < len(kids) && (n.Is(code.Bind) || n.Is(code.ExprStmt) && n.Kid(0).Is(code.Assign)) && kids[j].Off == n.Off && kids[j].End == n.End && kids[j].Kind == n.Kind {
			j++
		}
		var err error
		if j > i+1 {
			err = m.goSeveral(kids[i:j], in)
			i = j - 1
		} else {
			_, err = m.statement(n, in)
		}
		if err != nil {
			return err
		}
		if !head {
			in = s
		}
	}
	return nil
}

// goSeveral gives several targets their values at once.
func (m *machine) goSeveral(list1 []*code.Node, s *scope) error {
	parts := func(n *code.Node) (to, v *code.Node, kind string) {
		if n.Is(code.Bind) {
			return n.Kid(0), n.Kid(1), "let"
		}
		return n.Kids[0].Kid(0), n.Kids[0].Kid(1), ""
	}
	_, second, _ := parts(list1[1])
	var values []any
	if second.Is(code.Call) && second.Kid(0).Is(code.Name) && second.Kids[0].Name == code.SecondResult {
		_, first, _ := parts(list1[0])
		v, err := m.goResults(first, len(list1), s)
		if err != nil {
			return err
		}
		values = v
		for i, n := range list1 { // that it works is what is asked
			if to, _, _ := parts(n); i > 0 && isError(to) {
				if o, ok := values[i].(*opaque); ok && o.path != anError {
					values[i] = nil
				}
			}
		}
	} else {
		for _, n := range list1 {
			_, e, _ := parts(n)
			if e == nil {
				values = append(values, nil)
				continue
			}
			v, err := m.eval(e, s)
			if err != nil {
				return err
			}
			values = append(values, v)
		}
	}
	for i, n := range list1 {
		to, _, kind := parts(n)
		if to.Is(code.Name) && to.Name == "_" {
			continue
		}
		if err := m.assign(to, values[i], s, kind); err != nil {
			return err
		}
	}
	return nil
}

// anError is the path of an error that is there.
const anError = "an error"

func isError(n *code.Node) bool {
	return n.Is(code.Name) && (n.Name == "err" || strings.HasSuffix(n.Name, "Err") || strings.HasSuffix(n.Name, "err"))
}

// goResults are so many results of an expression.
func (m *machine) goResults(n *code.Node, count int, s *scope) ([]any, error) {
	if n.Is(code.Index) { // of a map: whether the key is there
		base, err := m.eval(n.Kid(0), s)
		if err != nil {
			return nil, err
		}
		k, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, err
		}
		o, ok := base.(*object)
		if base == nil {
			return []any{"", false}, nil
		}
		if !ok || !known(k) {
			return nil, giveUp("an element that is not known")
		}
		if v, ok := o.get(show(k)); ok {
			return []any{v, true}, nil
		}
		return []any{m.goZero(o.holds, false, s), false}, nil
	}
	if n.Is(code.Unknown) && n.Name == code.Asserted {
		return nil, giveUp("whether something is of a type")
	}
	v, err := m.eval(n, s)
	if err != nil {
		return nil, err
	}
	if l, ok := v.(*list); ok && l.tuple && len(l.items) >= count {
		return l.items, nil
	}
	values := []any{v}
	for len(values) < count {
		values = append(values, dontKnow("one of several results"))
	}
	if _, ok := v.(*opaque); !ok {
		return nil, giveUp("several results")
	}
	return values, nil
}

// results is a list of results.
func results(v ...any) *list { return &list{items: v, tuple: true} }

func goError(text string) any {
	o := newObject()
	o.class = &class{name: "error", builtin: true, statics: newObject(), methods: newObject()}
	o.set("message", text)
	return o
}

// goMethod calls a method of what the language has; done is false for any other.
func (m *machine) goMethod(base any, name string, args []any, s *scope, at spot) (v any, done bool, err error) {
	switch b := base.(type) {
	case *object:
		if b.class == nil || b.class.node != nil {
			return nil, false, nil
		}
		switch b.class.name + "." + name {
		case "error.Error":
			msg, _ := b.get("message")
			return msg, true, nil
		case "sync.Once.Do":
			if b.cells["done"] != nil {
				return nil, true, nil
			}
			b.set("done", true)
			_, err := m.call(first(args), undefined, nil, nil, at)
			return nil, true, err
		case "sync.WaitGroup.Wait", "golang.org/x/sync/errgroup.Group.Wait":
			return nil, true, &exit{stays: true}
		case "sync.WaitGroup.Go", "golang.org/x/sync/errgroup.Group.Go":
			return nil, true, m.beside(first(args), at)
		case "strings.Builder.WriteString", "strings.Builder.WriteByte", "strings.Builder.WriteRune", "bytes.Buffer.WriteString":
			old, _ := b.get("text")
			t, _ := old.(string)
			if !known(first(args)) || len(t) > maxText {
				return nil, true, giveUp("a text that is written")
			}
			b.set("text", t+show(first(args)))
			return results(nil, nil), true, nil
		case "strings.Builder.String", "bytes.Buffer.String":
			t, ok := b.get("text")
			if !ok {
				t = ""
			}
			return t, true, nil
		case "bufio.Scanner.Scan":
			rest := b.cells["rest"].v.(*list)
			if len(rest.items) == 0 {
				return false, true, nil
			}
			b.set("line", strings.TrimRight(show(rest.items[0]), "\r\n"))
			rest.items = rest.items[1:]
			return true, true, nil
		case "bufio.Scanner.Text":
			line, _ := b.get("line")
			return line, true, nil
		case "bufio.Scanner.Err", "bufio.Scanner.Buffer", "bufio.Scanner.Split":
			return nil, true, nil
		case "url.Port", "url.Hostname", "url.String":
			v, _ := b.get(name)
			return v, true, nil
		case "regexp.MatchString":
			re := b.cells["re"].v.(*regexp.Regexp)
			if !known(first(args)) {
				return dontKnow("whether a text matches"), true, nil
			}
			return re.MatchString(show(first(args))), true, nil
		case "regexp.FindStringSubmatch":
			re := b.cells["re"].v.(*regexp.Regexp)
			found := re.FindStringSubmatch(show(first(args)))
			if found == nil {
				return nil, true, nil
			}
			l := &list{}
			for _, x := range found {
				l.items = append(l.items, x)
			}
			return l, true, nil
		case "github.com/spf13/cobra.Command.AddCommand":
			l := &list{}
			if c := b.cells["\x00subs"]; c != nil {
				l = c.v.(*list)
			}
			l.items = append(l.items, args...)
			b.set("\x00subs", l)
			return nil, true, nil
		case "github.com/spf13/cobra.Command.Execute", "github.com/spf13/cobra.Command.ExecuteContext":
			return nil, true, m.cobra(b, at)
		}
	case *content:
		switch name {
		case "Close":
			return nil, true, nil
		}
	case *opaque:
		switch {
		case name == "Wait" && strings.HasPrefix(b.path, "golang.org/x/sync/errgroup."):
			return nil, true, &exit{stays: true}
		case name == "Go" && strings.HasPrefix(b.path, "golang.org/x/sync/errgroup."):
			return nil, true, m.beside(first(args), at)
		case name == "Decode" && strings.HasSuffix(b.path, ".NewDecoder()") && len(b.args) == 1:
			v, err := m.goDecode(b.args[0], first(args), at)
			return v, true, err
		}
	}
	return nil, false, nil
}

// beside runs a function beside the others: that it stays where it is holds
// nothing up.
func (m *machine) beside(fn any, at spot) error {
	if fn == nil {
		return nil
	}
	_, err := m.call(fn, undefined, nil, nil, at)
	if x, ok := err.(*exit); ok && x.stays {
		return nil
	}
	return err
}

// cobra runs the command that the command line names (documentation of cobra
// 1.10, "Create rootCmd").
func (m *machine) cobra(root *object, at spot) error {
	cmd := root
	words := m.argv()[1:]
	for i := 0; i < len(words); i++ {
		w, ok := words[i].(string)
		if !ok {
			return giveUp("the command line")
		}
		subs := cmd.cells["\x00subs"]
		if subs == nil {
			break
		}
		for _, x := range subs.v.(*list).items {
			sub, ok := x.(*object)
			if !ok {
				return giveUp("a command")
			}
			use, _ := sub.get("Use")
			name, _, _ := strings.Cut(show(use), " ")
			if name == w {
				cmd = sub
				break
			}
		}
	}
	for _, name := range []string{"PersistentPreRunE", "PersistentPreRun", "PreRunE", "PreRun", "RunE", "Run"} {
		c := cmd.cells[name]
		if c == nil && strings.HasPrefix(name, "Persistent") {
			c = root.cells[name]
		}
		if c == nil {
			continue
		}
		v, err := m.call(c.v, undefined, []any{cmd, &list{}}, nil, at)
		if err != nil {
			return err
		}
		if o, ok := v.(*object); ok && o.class != nil && o.class.name == "error" {
			return &exit{}
		}
	}
	return nil
}

// goDecode fills what is handed over with what a file or a text holds.
func (m *machine) goDecode(from, into any, at spot) (any, error) {
	v, err := m.parsed(from)
	if err != nil {
		if _, ok := err.(*thrown); ok {
			return goError("not understood"), nil
		}
		return nil, err
	}
	o, ok := into.(*object)
	if !ok || !known(v) {
		return nil, giveUp("what is read into a variable")
	}
	d, ok := m.fitted(v).(*object)
	if !ok {
		return nil, giveUp("what is read into a variable")
	}
	return nil, m.goFill(o, d, 0)
}

// goFill sets the fields of a structure from data, by their names or tags;
// letter case does not count.
func (m *machine) goFill(o, d *object, depth int) error {
	if depth > 10 {
		return giveUp("nested too deep")
	}
	for _, k := range d.keys {
		v := d.cells[k].v
		if o.dict {
			o.set(k, v)
			continue
		}
		if o.class == nil || o.class.node == nil {
			return giveUp("a structure that is not of the tree")
		}
		for _, b := range o.class.node.Kid(1).Kids {
			if !b.Is(code.Bind) {
				continue
			}
			tag := ""
			if t := b.Kid(2); t.Is(code.String) {
				tag = t.Name
			}
			same := strings.EqualFold(b.Kid(0).Name, k)
			for _, lib := range []string{"json", "yaml", "toml", "mapstructure"} {
				if i := strings.Index(tag, lib+`:"`); i >= 0 {
					name, _, _ := strings.Cut(tag[i+len(lib)+2:], `"`)
					name, _, _ = strings.Cut(name, ",")
					same = same || name == k
				}
			}
			if !same {
				continue
			}
			if sub, ok := v.(*object); ok {
				in, err := m.goField(o, b.Kid(0).Name, o.class.scope)
				if err != nil {
					return err
				}
				if in == nil { // a pointer to a structure, or a map
					in = m.goZero(b.Alias, false, o.class.scope)
					if in == nil || in == any("") {
						sub.dict = true
						in = sub
					}
				}
				if to, ok := in.(*object); ok && to != sub {
					if err := m.goFill(to, sub, depth+1); err != nil {
						return err
					}
				}
				o.set(b.Kid(0).Name, in)
				continue
			}
			if f, ok := v.(float64); ok && f == math.Trunc(f) {
				v = integer(f)
			}
			if x, ok := v.(integer); ok && b.Alias == "string" {
				v = show(x)
			}
			o.set(b.Kid(0).Name, v)
		}
	}
	return nil
}

// goBuiltin calls a function of the language or of its library; done is false
// for any other.
func (m *machine) goBuiltin(f *opaque, args []any, at spot) (v any, done bool, err error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	text := func(i int) string {
		if arg(i) == nil {
			return ""
		}
		return show(arg(i))
	}
	unknownArg := opaqueAmong(args)
	if unknownArg != nil {
		switch {
		case strings.HasPrefix(f.path, "strings."), strings.HasPrefix(f.path, "strconv."), f.path == "fmt.Sprintf", f.path == "fmt.Sprint", f.path == "net.JoinHostPort", f.path == "net.SplitHostPort", f.path == "net/url.Parse", f.path == "cmp.Or", goNumbers[f.path]:
			return dontKnow("what is made of " + unknownArg.String()), true, nil
		}
	}
	whole := func(n integer, err error) (any, bool, error) {
		if err != nil {
			return results(integer(0), goError("not a number")), true, nil
		}
		return results(n, nil), true, nil
	}
	join := func(l any) ([]string, error) {
		if l == nil {
			return nil, nil
		}
		items, err := m.items(l, m.topOf(at))
		var out []string
		for _, x := range items {
			if !known(x) {
				return nil, giveUp("a list that is not known")
			}
			out = append(out, show(x))
		}
		return out, err
	}
	texts := func(list1 []string) any {
		l := &list{}
		for _, x := range list1[:min(len(list1), maxItems)] {
			l.items = append(l.items, x)
		}
		return l
	}
	if kind, ok := goFlagKind(f.path); ok && len(args) >= 3 {
		if name, ok := arg(0).(string); ok {
			short, def := "", arg(1)
			if rest, ok := strings.CutSuffix(kind, "P"); ok {
				kind, short, def = rest, text(1), arg(2)
			}
			return m.goFlag(name, short, kind, def)
		}
	}
	if goNumbers[f.path] && len(args) == 1 {
		n, ok := toNumber(arg(0))
		if ok && strings.HasPrefix(f.path, "float") {
			return n, true, nil
		}
		return integer(n), ok, nil
	}
	switch f.path {
	case "string":
		if i, ok := arg(0).(integer); ok {
			return string(rune(i)), true, nil
		}
		if c, ok := arg(0).(*content); ok {
			return c.text, true, nil
		}
		return arg(0), true, nil
	case "len", "cap":
		switch x := arg(0).(type) {
		case nil:
			return integer(0), true, nil
		case string:
			return integer(len(x)), true, nil
		case *list:
			return integer(len(x.items)), true, nil
		case *object:
			return integer(len(x.keys)), true, nil
		case *content:
			return integer(len(x.text)), true, nil
		}
		return dontKnow("a length"), true, nil
	case "append":
		l := &list{}
		if from, ok := arg(0).(*list); ok {
			l.items = slices.Clone(from.items)
		} else if arg(0) != nil {
			return nil, true, giveUp("a list that is not known")
		}
		if l.items = append(l.items, args[min(1, len(args)):]...); len(l.items) > maxItems {
			return nil, true, giveUp("a list that is too long")
		}
		return l, true, nil
	case "delete":
		if o, ok := arg(0).(*object); ok {
			o.remove(text(1))
		}
		return nil, true, nil
	case "min", "max":
		best := arg(0)
		for _, x := range args[min(1, len(args)):] {
			a, ok1 := toNumber(x)
			b, ok2 := toNumber(best)
			if !ok1 || !ok2 {
				return dontKnow("the most of what is not known"), true, nil
			}
			if (a > b) == (f.path == "max") {
				best = x
			}
		}
		return best, true, nil
	case "panic":
		return nil, true, &thrown{arg(0)}
	case "recover", "close", "print", "println", "fmt.Println", "fmt.Printf", "fmt.Print", "fmt.Fprintln", "fmt.Fprintf", "fmt.Fprint", "log.Println", "log.Printf", "log.Print", "log.SetFlags", "log.SetPrefix", "os/signal.Notify", "time.Sleep", "flag.Parse", "github.com/spf13/pflag.Parse", "log/slog.Info", "log/slog.Debug", "log/slog.Warn", "log/slog.Error":
		return nil, true, nil
	case "os.Exit", "log.Fatal", "log.Fatalf", "log.Fatalln", "log.Panic", "log.Panicf", "log.Panicln", "runtime.Goexit":
		return nil, true, &exit{}
	case "os.Getenv":
		v, _ := m.lookup(text(0), at)
		return v, unknownArg == nil, nil
	case "os.LookupEnv", "syscall.Getenv":
		v, ok := m.lookup(text(0), at)
		return results(v, ok), unknownArg == nil, nil
	case "os.Setenv":
		if !known(arg(1)) {
			return nil, true, giveUp("what a variable is set to")
		}
		m.env[text(0)] = text(1)
		return nil, true, nil
	case "os.Unsetenv":
		delete(m.env, text(0))
		return nil, true, nil
	case "os.Environ":
		l := &list{}
		for _, k := range m.envKeys() {
			l.items = append(l.items, k+"="+m.env[k])
		}
		return l, true, nil
	case "os.ExpandEnv":
		if unknownArg == nil {
			return expand(text(0), func(k string) string { return m.env[k] }), true, nil
		}
	case "os.ReadFile", "io/ioutil.ReadFile", "os.Open":
		switch x := m.readFile(arg(0)).(type) {
		case *thrown:
			return results(nil, goError("no such file")), true, nil
		case *content:
			return results(x, nil), true, nil
		}
		return results(dontKnow("a file"), nil), true, nil
	case "io.ReadAll", "io/ioutil.ReadAll":
		return results(arg(0), nil), true, nil
	case "os.Stat":
		if unknownArg == nil {
			if _, ok := m.readFile(arg(0)).(*thrown); ok {
				return results(nil, goError("no such file")), true, nil
			}
			return results(dontKnow("a file"), nil), true, nil
		}
	case "bytes.NewReader", "strings.NewReader", "bufio.NewReader", "bytes.NewBuffer", "bytes.NewBufferString", "context.Background", "strings.Clone", "bytes.TrimSpace":
		if f.path != "context.Background" {
			return arg(0), true, nil
		}
	case "bufio.NewScanner":
		if c, ok := arg(0).(*content); ok {
			lines, _ := m.items(c, m.topOf(at))
			o := newObject()
			o.class = &class{name: "bufio.Scanner", builtin: true, statics: newObject(), methods: newObject()}
			o.set("rest", &list{items: lines})
			return o, true, nil
		}
	case "errors.Join":
		for _, a := range args {
			if a != nil {
				return goError("several errors"), true, nil
			}
		}
		return nil, true, nil
	case "errors.New":
		return goError(text(0)), true, nil
	case "fmt.Errorf":
		return goError("an error"), true, nil
	case "errors.Is", "errors.As":
		if arg(0) == nil {
			return false, true, nil
		}
		return dontKnow("what kind of error it is"), true, nil
	case "fmt.Sprintf":
		return goFormat(text(0), args[min(1, len(args)):])
	case "fmt.Sprint":
		var b strings.Builder
		for i := range args {
			b.WriteString(text(i))
		}
		return b.String(), true, nil
	case "strconv.Itoa":
		return text(0), true, nil
	case "strconv.FormatInt", "strconv.FormatUint":
		return text(0), true, nil
	case "strconv.Quote":
		return strconv.Quote(text(0)), true, nil
	case "strconv.Atoi":
		n, err := strconv.Atoi(text(0))
		return whole(integer(n), err)
	case "strconv.ParseInt", "strconv.ParseUint":
		base, _ := toNumber(arg(1))
		bits, _ := toNumber(arg(2))
		if f.path == "strconv.ParseUint" {
			n, err := strconv.ParseUint(text(0), int(base), int(bits))
			return whole(integer(n), err)
		}
		n, err := strconv.ParseInt(text(0), int(base), int(bits))
		return whole(integer(n), err)
	case "strconv.ParseBool":
		b, err := strconv.ParseBool(text(0))
		if err != nil {
			return results(false, goError("not a truth value")), true, nil
		}
		return results(b, nil), true, nil
	case "strings.TrimSpace":
		return strings.TrimSpace(text(0)), true, nil
	case "strings.Trim":
		return strings.Trim(text(0), text(1)), true, nil
	case "strings.TrimLeft":
		return strings.TrimLeft(text(0), text(1)), true, nil
	case "strings.TrimRight":
		return strings.TrimRight(text(0), text(1)), true, nil
	case "strings.TrimPrefix":
		return strings.TrimPrefix(text(0), text(1)), true, nil
	case "strings.TrimSuffix":
		return strings.TrimSuffix(text(0), text(1)), true, nil
	case "strings.ToLower":
		return strings.ToLower(text(0)), true, nil
	case "strings.ToUpper":
		return strings.ToUpper(text(0)), true, nil
	case "strings.HasPrefix":
		return strings.HasPrefix(text(0), text(1)), true, nil
	case "strings.HasSuffix":
		return strings.HasSuffix(text(0), text(1)), true, nil
	case "strings.Contains":
		return strings.Contains(text(0), text(1)), true, nil
	case "strings.EqualFold":
		return strings.EqualFold(text(0), text(1)), true, nil
	case "strings.Index":
		return integer(strings.Index(text(0), text(1))), true, nil
	case "strings.LastIndex":
		return integer(strings.LastIndex(text(0), text(1))), true, nil
	case "strings.Count":
		return integer(strings.Count(text(0), text(1))), true, nil
	case "strings.ReplaceAll":
		return strings.ReplaceAll(text(0), text(1), text(2)), true, nil
	case "strings.Replace":
		n, _ := toNumber(arg(3))
		return strings.Replace(text(0), text(1), text(2), int(n)), true, nil
	case "strings.Split":
		return texts(strings.Split(text(0), text(1))), true, nil
	case "strings.SplitN":
		n, _ := toNumber(arg(2))
		return texts(strings.SplitN(text(0), text(1), int(n))), true, nil
	case "strings.Fields":
		return texts(strings.Fields(text(0))), true, nil
	case "strings.Join":
		parts, err := join(arg(0))
		return strings.Join(parts, text(1)), true, err
	case "strings.Cut":
		a, b, ok := strings.Cut(text(0), text(1))
		return results(a, b, ok), true, nil
	case "strings.CutPrefix":
		a, ok := strings.CutPrefix(text(0), text(1))
		return results(a, ok), true, nil
	case "strings.CutSuffix":
		a, ok := strings.CutSuffix(text(0), text(1))
		return results(a, ok), true, nil
	case "net.JoinHostPort":
		if strings.Contains(text(0), ":") {
			return "[" + text(0) + "]:" + text(1), true, nil
		}
		return text(0) + ":" + text(1), true, nil
	case "net.SplitHostPort":
		i := strings.LastIndexByte(text(0), ':')
		if i < 0 {
			return results("", "", goError("missing port in address")), true, nil
		}
		return results(strings.Trim(text(0)[:i], "[]"), text(0)[i+1:], nil), true, nil
	case "net/url.Parse", "net/url.ParseRequestURI":
		u, done, err := m.made(&opaque{path: "URL"}, []any{text(0)}, at)
		if err != nil || !done || !strings.Contains(text(0), "://") {
			return dontKnow("an address"), true, nil
		}
		from, ok := u.(*object)
		if !ok {
			return u, true, nil
		}
		o := newObject()
		o.class = &class{name: "url", builtin: true, statics: newObject(), methods: newObject()}
		host, _ := from.get("hostname")
		href, _ := from.get("href")
		rest := strings.SplitN(strings.SplitN(text(0), "://", 2)[1], "/", 2)[0]
		port := ""
		if i := strings.LastIndexByte(rest, ':'); i >= 0 && !strings.HasSuffix(rest, "]") {
			port = rest[i+1:]
		}
		o.set("Hostname", strings.Trim(show(host), "[]"))
		o.set("Port", port)
		o.set("Host", rest)
		o.set("String", href)
		scheme, _, _ := strings.Cut(text(0), ":")
		o.set("Scheme", scheme)
		return results(o, nil), true, nil
	case "cmp.Or":
		for _, a := range args {
			if yes, ok := truth(a, true); ok && yes {
				return a, true, nil
			}
		}
		return args[len(args)-1], true, nil
	case "slices.Contains":
		yes, ok := m.contains(arg(0), arg(1), true)
		if arg(0) == nil {
			yes, ok = false, true
		}
		if !ok {
			return dontKnow("whether a list holds something"), true, nil
		}
		return yes, true, nil
	case "path/filepath.Join", "path.Join":
		parts, err := join(&list{items: args})
		return path.Join(parts...), true, err
	case "regexp.MustCompile", "regexp.Compile":
		re, err := regexp.Compile(text(0))
		if err != nil || len(text(0)) > 300 {
			return nil, true, giveUp("a regular expression")
		}
		o := newObject()
		o.class = &class{name: "regexp", builtin: true, statics: newObject(), methods: newObject()}
		o.cells["re"] = &cell{v: re}
		if f.path == "regexp.Compile" {
			return results(o, nil), true, nil
		}
		return o, true, nil
	}
	if !value.Decodes(f.path) {
		return nil, false, nil
	}
	from, gives := arg(0), func(err any) any { return err }
	switch {
	case strings.HasSuffix(f.path, ".DecodeFile"):
		from = m.readFile(from)
		fallthrough
	case strings.HasSuffix(f.path, ".Decode"):
		gives = func(err any) any { return results(dontKnow("what was read"), err) }
	}
	v, err = m.goDecode(from, arg(1), at)
	return gives(v), true, err
}

// goFlagKind is what kind of a flag a call defines (packages flag and pflag).
func goFlagKind(p string) (kind string, ok bool) {
	i := strings.LastIndexByte(p, '.')
	if i < 0 {
		return "", false
	}
	switch of := p[:i]; {
	case of == "flag", of == "github.com/spf13/pflag", of == "flag.NewFlagSet()", of == "github.com/spf13/pflag.NewFlagSet()", of == "flag.CommandLine", strings.HasSuffix(of, ".Flags()"), strings.HasSuffix(of, ".PersistentFlags()"):
	default:
		return "", false
	}
	switch kind = p[i+1:]; strings.TrimSuffix(kind, "P") {
	case "String", "Int", "Int64", "Int32", "Uint", "Uint64", "Uint16", "Bool":
		return kind, true
	}
	return "", false
}

// goFlag is what the command line gives for a flag, or its default.
func (m *machine) goFlag(name, short, kind string, def any) (any, bool, error) {
	words := m.argv()[1:]
	for i, w := range words {
		s, ok := w.(string)
		if !ok {
			continue
		}
		word, v, has := strings.Cut(s, "=")
		dashes := strings.TrimPrefix(strings.TrimPrefix(word, "-"), "-")
		if word == dashes || dashes != name && (short == "" || word != "-"+short) {
			continue
		}
		if kind == "Bool" {
			b, err := strconv.ParseBool(v)
			return !has || err == nil && b, true, nil
		}
		if !has {
			if i+1 == len(words) {
				return nil, true, &exit{}
			}
			if v, ok = words[i+1].(string); !ok {
				return dontKnow("an argument"), true, nil
			}
		}
		if kind == "String" {
			return v, true, nil
		}
		n, err := strconv.ParseInt(v, 0, 64)
		if err != nil {
			return nil, true, &exit{}
		}
		return integer(n), true, nil
	}
	return def, true, nil
}

// goNumbers are the types of numbers, which convert.
var goNumbers = map[string]bool{"int": true, "int8": true, "int16": true, "int32": true, "int64": true, "uint": true, "uint8": true, "uint16": true, "uint32": true, "uint64": true, "byte": true, "rune": true, "float64": true, "float32": true, "time.Duration": true}

// expand puts variables into a text, $NAME and ${NAME}, as os.Expand does: the
// core does not import os.
func expand(s string, get func(string) string) string {
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] != '$' || i+1 == len(s) {
			b.WriteByte(s[i])
			continue
		}
		rest, end := s[i+1:], 0
		if rest[0] == '{' {
			end = strings.IndexByte(rest, '}')
			if end < 0 {
				b.WriteByte(s[i])
				continue
			}
			b.WriteString(get(rest[1:end]))
			i += end + 1
			continue
		}
		for end < len(rest) && (rest[end] == '_' || rest[end] >= '0' && rest[end] <= '9' || rest[end] >= 'A' && rest[end] <= 'Z' || rest[end] >= 'a' && rest[end] <= 'z') {
			end++
		}
		b.WriteString(get(rest[:end]))
		i += end
	}
	return b.String()
}

// goFormat is fmt.Sprintf with plain verbs, each of a value that it is for
// (package fmt of Go 1.25, "Printing").
func goFormat(format string, args []any) (any, bool, error) {
	out, ok := verbs(format, args, func(verb byte, v any) (string, bool) {
		fits := false
		switch v.(type) {
		case string:
			fits = strings.IndexByte("svq", verb) >= 0
		case integer:
			fits = strings.IndexByte("dv", verb) >= 0
		case float64:
			fits = verb == 'v'
		case bool:
			fits = strings.IndexByte("tv", verb) >= 0
		}
		if verb == 'q' {
			return strconv.Quote(show(v)), fits
		}
		return show(v), fits
	})
	if !ok {
		return dontKnow("a format"), true, nil
	}
	return out, true, nil
}

// goInvoke runs a function of Go: what a method belongs to is its last
// parameter.
func (m *machine) goInvoke(f *function, this any, args []any, s *scope) (any, error) {
	used := 0
	for _, p := range paramsOf(f.node.Kid(0)) {
		switch {
		case p.Flag&code.Star != 0:
			s.declare(p.Name, this)
		case p.Flag&code.Rest != 0:
			l := &list{}
			if used < len(args) {
				l.items = slices.Clone(args[used:])
			}
			used = len(args)
			s.declare(p.Name, l)
		case used < len(args):
			s.declare(p.Name, args[used])
			used++
		default:
			s.declare(p.Name, nil)
		}
	}
	err := m.block(f.node.Kid(1).Kids, s)
	if l, ok := err.(*leave); ok && l.kind == "return" {
		return l.v, nil
	}
	return nil, err
}

// goRange runs a loop over what a list, a map, a text or a number holds.
func (m *machine) goRange(n *code.Node, s *scope, turn func(*scope) (bool, error), broke *bool) (bool, error) {
	over, err := m.eval(n.Kids[len(n.Kids)-2], s)
	if err != nil {
		return false, err
	}
	type pair struct{ k, v any }
	var pairs []pair
	switch x := over.(type) {
	case nil:
	case *list:
		for i, v := range x.items {
			pairs = append(pairs, pair{integer(i), v})
		}
	case *object:
		if !x.dict {
			return false, giveUp("a loop over what is not known")
		}
		for _, k := range x.keys {
			pairs = append(pairs, pair{k, x.cells[k].v})
		}
	case string:
		for i, r := range x {
			pairs = append(pairs, pair{integer(i), string(r)})
		}
	case integer:
		if x > maxItems {
			return false, giveUp("a loop that is too long")
		}
		for i := range x {
			pairs = append(pairs, pair{i, i})
		}
	case *opaque:
		if !strings.Contains(x.path, "os.Args") {
			return false, giveUp("a loop over what is not known")
		}
	default:
		return false, giveUp("a loop over what is not known")
	}
	for _, p := range pairs {
		in := s.inner()
		if len(n.Kids) == 3 && n.Kids[0].Is(code.Name) {
			switch {
			case n.Name == "in":
				in.declare(n.Kids[0].Name, p.k)
			default:
				in.declare(n.Kids[0].Name, p.v)
				if n.Alias != "" {
					in.declare(n.Alias, p.k)
				}
			}
		}
		if done, err := turn(in); done {
			return *broke, err
		}
	}
	return false, nil
}
