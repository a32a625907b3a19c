package trace

import (
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode/utf16"

	"ubique/core/code"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// root stands for the folder of the tree in paths.
const root = place.Root

// factory is the hidden key under which a dictionary keeps what makes its defaults.
const factory = "\x00factory"

// pyPath is a pathlib.Path.
type pyPath string

// treePath is a path as one of the tree; ok is false where it lies outside.
func (m *machine) treePath(p string) (string, bool) {
	if rest, ok := strings.CutPrefix(p, root+"/"); ok {
		return path.Clean(rest), true
	}
	if strings.HasPrefix(p, "/") {
		return "", false
	}
	return path.Join(m.e.Dir, p), true
}

// there reports whether a path is one of a file of the tree, or of a folder of it.
func (m *machine) there(p string, file, folder bool) bool {
	t, ok := m.treePath(p)
	return ok && (file && m.has(t) || folder && m.e.Loader.Folder(t))
}

// has reports whether the tree has a file, by its path in the tree.
func (m *machine) has(file string) bool {
	return slices.Contains(m.e.Loader.Beside(source.Dir(file)), file)
}

// lacks reports whether a certificate or a key that a program names is nowhere: it lies in
// the tree by its name, and the tree does not have it.
func (m *machine) lacks(name string) bool {
	switch path.Ext(name) {
	case ".pem", ".crt", ".key", ".cert", ".cer":
		return !strings.HasPrefix(name, "/") && !m.there(name, true, false)
	}
	return false
}

// strictMode reports whether a file of JavaScript is strict code as a whole: a module, or
// one that says so at its beginning.
func strictMode(f *code.File) bool {
	if f.Lang == code.TypeScript || strings.HasSuffix(f.Name, ".mjs") {
		return true
	}
	for _, k := range f.Body.Kids {
		if k.Is(code.Import) || k.Is(code.Export) || k.Flag&code.Exported != 0 {
			return true
		}
	}
	return len(f.Body.Kids) > 0 && f.Body.Kids[0].Is(code.ExprStmt) && f.Body.Kids[0].Kid(0).Is(code.String) && f.Body.Kids[0].Kids[0].Name == "use strict"
}

// key is a property of a value.
func (m *machine) key(base any, name string, s *scope, n *code.Node) (any, error) {
	switch b := base.(type) {
	case nil, undef:
		return nil, m.ofNothing(base, name, s, n)
	case *envMap:
		if s.python() {
			return &opaque{path: "os.environ." + name}, nil
		}
		if err := m.denied("env", name); err != nil {
			return nil, err
		}
		if v, ok := m.lookup(name, spot{s.module.file, n}); ok {
			return v, nil
		}
		return undefined, nil
	case *object:
		return m.objectKey(b, name, s, n)
	case mark:
		if name == "description" {
			_, text, _ := strings.Cut(b.id, " ")
			return text, nil
		}
		return dontKnow("the property " + name + " of a symbol"), nil
	case *proxied:
		return m.proxyGet(b, name, s, n)
	case *class:
		if s.python() && !b.builtin {
			if v, done, err := m.described(b, nil, name, false, s, n); done || err != nil {
				return v, err
			}
		}
		if name == "__subclasses__" && s.python() {
			return &function{name: name, native: func(m *machine, _ any, _ []any, _ map[string]any, _ spot) (any, error) {
				l := &list{}
				for _, c := range m.family {
					if slices.Contains(c.bases, any(b)) {
						l.items = append(l.items, c)
					}
				}
				return l, nil
			}}, nil
		}
		if v, ok := classKey(b, name, true); ok {
			if f, isF := v.(*function); isF {
				switch {
				case f.getter && !s.python():
					return m.call(f, b, nil, nil, spot{s.module.file, n})
				case f.classOf || !s.python():
					w := *f
					w.this, w.bound = b, f.classOf || f.bound
					return &w, nil
				}
			}
			return v, nil
		}
		if name == "name" || name == "__name__" {
			return b.name, nil
		}
		if v, ok := m.pdClassKey(b, name); ok && s.python() {
			return v, nil
		}
		if s.python() && name == "__annotations__" {
			return m.pyHints(b)
		}
		if s.python() && name == "__dataclass_fields__" {
			o := newObject()
			o.dict = true
			for _, k := range fieldsOf(b) {
				f, err := m.pyDataField(b, k)
				if err != nil {
					return nil, err
				}
				o.set(k, f)
			}
			return o, nil
		}
		if base := outer(b); base != nil {
			return &opaque{path: base.path + "." + name, recv: base}, nil
		}
		if s.python() {
			return nil, raise("AttributeError", name)
		}
		return undefined, nil
	case *function:
		if b.props != nil {
			if v, ok := b.props.get(name); ok {
				if get, isFn := v.(*function); isFn && get.getter && !s.python() {
					return m.call(get, b, nil, nil, spot{s.module.file, n})
				}
				return v, nil
			}
		}
		if name == "name" || name == "__name__" {
			return b.name, nil
		}
		if b.getter && s.python() && (name == "setter" || name == "deleter") {
			return &function{native: func(_ *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
				w := *b
				if f, ok := first(args).(*function); ok && name == "setter" {
					w.setter = f
				}
				return &w, nil
			}}, nil
		}
		if name == "prototype" {
			if b.node == nil || b.node.Flag&code.Arrow != 0 || s.python() {
				return nil, giveUp("a prototype")
			}
			return prototypeOf(b), nil
		}
		if name == "length" && b.node != nil && !s.python() { // of its parameters before the first with a default
			n := 0
			for _, p := range paramsOf(b.node.Kid(0)) {
				if p.Kid(0) != nil || p.Flag&code.Rest != 0 {
					break
				}
				n++
			}
			return float64(n), nil
		}
		return undefined, nil
	case *super:
		for _, c := range b.next() {
			if v, ok := classKey(c, name, false); ok {
				return m.bindTo(v, b.this, s, n)
			}
			if v, ok := classKey(c, name, true); ok {
				return m.bindTo(v, b.this, s, n)
			}
		}
		if o, ok := b.this.(*object); ok && o.mapping != nil && s.python() {
			return m.mappingKey(o, name, s)
		}
		if o, ok := b.this.(*object); ok && name == "__init__" && s.python() && o.class != nil {
			if model, _, _ := pdModel(o.class); model {
				return &function{name: name, native: func(m *machine, _ any, args []any, keys map[string]any, at spot) (any, error) {
					done, err := m.pdBuild(o.class, o, args, keys, at)
					if err == nil && !done {
						err = giveUp("what a model is made of")
					}
					return nil, err
				}}, nil
			}
		}
		if f := b.plain(name); f != nil && s.python() {
			return f, nil
		}
		if o, ok := b.this.(*object); ok && o.class != nil { // of what the class is built on
			if base := outer(o.class); base != nil {
				return &opaque{path: base.path + "()." + name, recv: &opaque{path: base.path + "()", recv: base}, self: o}, nil
			}
		}
		return &opaque{path: "super." + name}, nil
	case *module:
		if c := b.top.vars[name]; c != nil {
			return m.read(c)
		}
		sub := strings.TrimSuffix(b.file.Name, "__init__.py")
		if sub != b.file.Name {
			for _, p := range []string{sub + name + ".py", sub + name + "/__init__.py"} {
				if f := m.e.Loader.File(p); f != nil {
					return m.load(p)
				}
			}
		}
		if c := b.top.vars["__getattr__"]; c != nil && s.python() { // PEP 562
			if f, ok := c.v.(*function); ok {
				return m.call(f, undefined, []any{name}, nil, spot{s.module.file, n})
			}
		}
		if s.python() && b.file.Lang == code.Python && !strings.HasPrefix(name, "_") && path.Base(b.file.Name) != "__init__.py" && !open(b.file) && !m.reached() {
			return nil, certainly("AttributeError", "module '"+strings.TrimSuffix(path.Base(b.file.Name), ".py")+"' has no attribute '"+name+"'")
		}
		return nil, giveUp("%s is not found in %s", name, b.file.Name)
	case string:
		if name == "name" && s.python() {
			return m.memberName(b, s)
		}
		if name == "length" { // in units of UTF-16
			n := 0
			for _, r := range b {
				n += max(1, utf16.RuneLen(r))
			}
			return float64(n), nil
		}
		if name == "value" { // of an enumeration of texts
			return b, nil
		}
		if s.python() {
			return m.memberOwn(b, name, s, n)
		}
		return ownProperty(name), nil
	case *list:
		if name == "length" {
			return float64(len(b.items)), nil
		}
		if name == "raw" && javascript(s.module.file.Lang) { // of the texts of a template
			return b, nil
		}
		return ownProperty(name), nil
	case float64, integer:
		if name == "value" { // of an enumeration of numbers
			return b, nil
		}
		if name == "name" && s.python() {
			return m.memberName(b, s)
		}
		if s.python() {
			return m.memberOwn(b, name, s, n)
		}
		return ownProperty(name), nil
	case pyPath:
		switch name {
		case "parent":
			return pyPath(path.Dir(string(b))), nil
		case "name":
			return path.Base(string(b)), nil
		case "stem":
			return strings.TrimSuffix(path.Base(string(b)), path.Ext(string(b))), nil
		case "suffix":
			return path.Ext(string(b)), nil
		case "parts":
			l := &list{tuple: true}
			rest := string(b)
			if strings.HasPrefix(rest, "/") {
				l.items = append(l.items, "/")
			}
			for _, w := range strings.FieldsFunc(rest, func(r rune) bool { return r == '/' }) {
				l.items = append(l.items, w)
			}
			return l, nil
		case "parents":
			l := &list{tuple: true}
			for p := path.Dir(string(b)); len(l.items) < 64; p = path.Dir(p) {
				l.items = append(l.items, pyPath(p))
				if p == "." || p == "/" {
					break
				}
			}
			return l, nil
		}
		return nil, giveUp("the %s of a path", name)
	case *promise:
		return undefined, nil
	case *opaque:
		if b.path == "import.meta" {
			switch file := root + "/" + s.module.file.Name; name {
			case "url":
				return "file://" + file, nil
			case "filename", "path":
				return file, nil
			case "dirname", "dir":
				return path.Dir(file), nil
			case "main":
				return s.module.file.Name == m.main.Name, nil
			}
		}
		v, err := m.opaqueKey(b, name)
		if o, ok := v.(*opaque); ok && err == nil && strings.Contains(b.path, "()") && o.path != "" && s.static != nil {
			at := spot{s.module.file, n}
			switch of := m.asking().Of((&turned{at: at, plain: true}).external(b, 0), name, s.static, at.span()); of.Kind {
			case value.External, value.Unknown, value.Func, value.Class, value.Instance, value.Module, value.EnvMap:
			default:
				if x, err := m.fromValue(of, 0); err == nil {
					return m.fitted(x), nil
				}
			}
		}
		return v, err
	}
	return undefined, nil
}

// memberName is the name of the one member of an enumeration that is this text or
// this number: such members are kept as what they are.
func (m *machine) memberName(v any, s *scope) (any, error) {
	found, several := "", false
	for _, mod := range m.modules {
		for _, c := range mod.top.vars {
			of, ok := c.v.(*class)
			if !ok || !of.enum {
				continue
			}
			for _, k := range of.statics.keys {
				if of.statics.cells[k].v == v && k != found {
					several = several || found != ""
					found = k
				}
			}
		}
	}
	if found == "" || several {
		return nil, giveUp("the name of what is of several enumerations, or of none")
	}
	return found, nil
}

// memberOwn is what the enumeration that a text or a number is a member of gives
// its members: a property, a method.
func (m *machine) memberOwn(v any, name string, s *scope, n *code.Node) (any, error) {
	var own *function
	for _, mod := range m.modules {
		for _, c := range mod.top.vars {
			of, ok := c.v.(*class)
			if !ok || !of.enum || !slices.ContainsFunc(of.statics.keys, func(k string) bool { return of.statics.cells[k].v == v }) {
				continue
			}
			f, _ := classKey(of, name, true)
			if f, ok := f.(*function); ok && f != own {
				if own != nil {
					return nil, giveUp("%s of what is of several enumerations", name)
				}
				own = f
			}
		}
	}
	if own == nil {
		return nil, giveUp("%s of a text or a number", name)
	}
	return m.bindTo(own, v, s, n)
}

// paths of what is known though it stands outside of the tree.
func (m *machine) opaqueKey(b *opaque, name string) (any, error) {
	if b.path == "" {
		return b, nil
	}
	if b.props != nil {
		if v, ok := b.props.get(name); ok {
			return v, nil
		}
	}
	p := b.path + "." + name
	if name == "default" && !strings.Contains(b.path, "()") {
		p = b.path
	}
	switch p {
	case "process.env", "Bun.env", "bun.env", "os.environ", "globalThis.process.env", "global.process.env", "import.meta.env":
		return &envMap{}, nil
	case "process.argv", "Bun.argv", "sys.argv", "os.Args":
		return m.commandLine(0), nil
	case "Deno.args":
		return m.commandLine(2), nil
	case "tornado.web.Application().settings":
		o := newObject()
		o.dict = true
		for _, k := range sortedKeys(b.keys) {
			o.set(k, b.keys[k])
		}
		if b.props == nil {
			b.props = newObject()
		}
		b.props.set(name, o)
		return o, nil
	case "commander.program":
		if b.props == nil {
			b.props = newObject()
		}
		c := m.commander("", nil)
		b.props.set(name, c.obj)
		return c.obj, nil
	case "process.platform", "sys.platform":
		return "linux", nil
	case "path.sep", "os.sep":
		return "/", nil
	case "process.pid":
		return dontKnow("the number of the process"), nil
	case "cluster.isPrimary", "cluster.isMaster":
		return !m.set.Worker, nil
	case "worker_threads.isMainThread":
		return !m.set.Worker && !m.inThread, nil
	case "worker_threads.workerData":
		if m.inThread {
			return m.handedOn, nil
		}
		return nil, nil
	case "cluster.isWorker":
		return m.set.Worker, nil
	case "globalThis.process", "global.process":
		return &opaque{path: "process"}, nil
	case "Symbol.iterator", "Symbol.asyncIterator", "Symbol.toPrimitive", "Symbol.hasInstance", "Symbol.toStringTag":
		return mark{p}, nil
	case "Number.MAX_SAFE_INTEGER":
		return float64(1<<53 - 1), nil
	}
	lang := m.main.Lang
	if javascript(lang) {
		lang = code.JavaScript
	}
	if v, ok := fixedNames[lang][p]; ok {
		return v, nil
	}
	if strings.HasSuffix(b.path, ".parse_args()") {
		if v, ok := m.defaulted(name); ok {
			return v, nil
		}
		if v, ok := m.chosen(name); ok {
			return v, nil
		}
	}
	o := &opaque{path: p, recv: b}
	if b.props == nil {
		b.props = newObject()
	}
	b.props.set(name, o) // what is set on it stays
	return o, nil
}

// bindTo is a method with its object; a getter is asked at once.
func (m *machine) bindTo(v, this any, s *scope, n *code.Node) (any, error) {
	f, ok := v.(*function)
	if !ok || f.static || f.bound {
		return v, nil
	}
	if f.getter {
		return m.call(f, this, nil, nil, spot{s.module.file, n})
	}
	w := *f
	w.this = this
	w.bound = f.node != nil || f.native != nil
	if f.classOf {
		if o, ok := this.(*object); ok {
			w.this = o.class
		}
	}
	return &w, nil
}

// described asks what a class of Python has under a name for its objects, where
// that decides what a field of theirs is: a property, or an object with __get__
// (Python's reference, "Descriptor guide"). By data it is asked before the fields
// of the object itself.
func (m *machine) described(c *class, this any, name string, data bool, s *scope, n *code.Node) (any, bool, error) {
	v, ok := classKey(c, name, true)
	if !ok {
		return nil, false, nil
	}
	switch v := v.(type) {
	case *function:
		if v.getter && v.setter != nil && this != nil {
			x, err := m.bindTo(v, this, s, n)
			return x, true, err
		}
	case *object:
		get := m.method(v, "__get__")
		if get == nil || data && m.method(v, "__set__") == nil {
			return nil, false, nil
		}
		x, err := m.call(get, v, []any{this, c}, nil, spot{s.module.file, n})
		return x, true, err
	}
	return nil, false, nil
}

// describes sets a field of an object of Python by what its class has for it.
func (m *machine) describes(o *object, name string, v any, s *scope, n *code.Node) (bool, error) {
	d, ok := classKey(o.class, name, true)
	if !ok {
		return false, nil
	}
	switch d := d.(type) {
	case *function:
		if d.getter && d.setter != nil {
			_, err := m.call(d.setter, o, []any{v}, nil, spot{s.module.file, n})
			return true, err
		}
	case *object:
		if set := m.method(d, "__set__"); set != nil {
			_, err := m.call(set, d, []any{o, v}, nil, spot{s.module.file, n})
			return true, err
		}
	}
	return false, nil
}

// next are the classes that super looks in, in order: of Python those after its
// own among the ones that the object comes from.
func (b *super) next() (list []*class) {
	if b.of.scope.python() {
		c, _ := b.this.(*class)
		if o, ok := b.this.(*object); ok {
			c = o.class
		}
		if c != nil {
			line := c.line()
			if i := slices.Index(line, b.of); i >= 0 {
				return line[i+1:]
			}
		}
	}
	for _, x := range b.of.bases {
		if c, ok := x.(*class); ok {
			list = append(list, c)
		}
	}
	return list
}

// plain is what object and type of Python do, to which super leads in the end;
// nil for what is not among it.
func (b *super) plain(name string) *function {
	do := func(f func(m *machine, args []any, keys map[string]any, at spot) (any, error)) *function {
		return &function{native: func(m *machine, _ any, args []any, keys map[string]any, at spot) (any, error) {
			return f(m, args, keys, at)
		}}
	}
	switch name {
	case "__new__":
		if base := outer(b.of); base != nil && base.path == "type" { // of a metaclass
			return do(func(m *machine, args []any, _ map[string]any, _ spot) (any, error) {
				space, ok := at2(args, 3).(*object)
				if !ok || len(m.making) == 0 {
					return nil, giveUp("a class that a metaclass makes")
				}
				c := m.making[len(m.making)-1]
				for _, k := range space.keys {
					if c.statics.cells[k] == nil {
						c.statics.set(k, space.cells[k].v)
					}
				}
				return c, nil
			})
		} else if base != nil {
			return nil
		}
		return do(func(_ *machine, args []any, _ map[string]any, at spot) (any, error) {
			c, ok := first(args).(*class)
			if !ok || c.enum || outer(c) != nil {
				return nil, giveUp("how an object is made")
			}
			o := newObject()
			o.class, o.made = c, &at
			return o, nil
		})
	case "__setattr__":
		if o, ok := b.this.(*object); ok {
			return do(func(_ *machine, args []any, _ map[string]any, _ spot) (any, error) {
				if len(args) == 2 {
					o.set(show(args[0]), args[1])
				}
				return nil, nil
			})
		}
	case "__call__": // of a metaclass
		if c, ok := b.this.(*class); ok {
			return do(func(m *machine, args []any, keys map[string]any, at spot) (any, error) {
				return m.build(c, args, keys, at)
			})
		}
	}
	return nil
}

// ownProperty is a property of a text, a list or a number: one of their methods, or
// nothing.
func ownProperty(name string) any {
	if jsOwn[name] {
		return dontKnow("the method " + name)
	}
	return undefined
}

// plainClass are classes of the language whose objects have what the program sets.
var plainClass = words("Error TypeError RangeError SyntaxError ReferenceError EvalError URIError match")

func (m *machine) objectKey(o *object, name string, s *scope, n *code.Node) (any, error) {
	py := s.python()
	if py && o.class != nil && !o.class.builtin {
		if v, done, err := m.described(o.class, o, name, o.cells[name] != nil, s, n); done || err != nil {
			return v, err
		}
	}
	if name == "constructor" && o.class != nil && !py {
		return o.class, nil
	}
	if c := o.cells[name]; c != nil { // package value has objects with fields as maps
		v, err := m.read(c)
		if f, ok := v.(*function); err == nil && ok && f.getter && !py {
			return m.call(f, o, nil, nil, spot{s.module.file, n})
		}
		return v, err
	}
	if o.class != nil {
		if v, ok := classKey(o.class, name, false); ok {
			return m.bindTo(v, o, s, n)
		}
		if py {
			if v, ok := classKey(o.class, name, true); ok {
				if _, fn := v.(*function); !fn && filledFromOutside(outer(o.class)) { // its fields are variables
					if x, ok := m.ask(n, s); ok {
						return x, nil
					}
					return dontKnow("the field " + name), nil
				}
				return m.bindTo(v, o, s, n)
			}
		}
		if name == "__class__" {
			return o.class, nil
		}
		if l := matchedTexts(o); l != nil && name == "length" && !py {
			return float64(len(l.items)), nil
		}
		if name == "size" && (o.class.name == "Map" || o.class.name == "Set") {
			for _, k := range o.keys {
				if o.class.name == "Set" && len(o.keys) > 1 && !known(o.cells[k].v) { // it may be one of the others
					return dontKnow("how many there are"), nil
				}
			}
			return float64(len(o.keys)), nil
		}
		if o.class.builtin && o.proto == nil && javascript(s.module.file.Lang) && !plainClass[o.class.name] {
			return dontKnow("the property " + name), nil
		}
		if py && name == "__dict__" {
			d := newObject()
			d.dict, d.keys, d.cells = true, o.keys, o.cells
			return d, nil
		}
		if base := outer(o.class); base != nil && !o.inherits(name) {
			if f := m.method(o, "__getattr__"); f != nil && py && dictBases[base.path] && !dictMethods[name] && !strings.HasPrefix(name, "__") {
				return m.call(f, o, []any{name}, nil, spot{s.module.file, n})
			}
			return &opaque{path: base.path + "()." + name, recv: &opaque{path: base.path + "()", recv: base}, self: o}, nil
		}
		if py {
			if f := m.method(o, "__getattr__"); f != nil {
				return m.call(f, o, []any{name}, nil, spot{s.module.file, n})
			}
			return nil, raise("AttributeError", name)
		}
	}
	if py && !o.dict && o.class == nil {
		return nil, raise("AttributeError", name)
	}
	if o.proto != nil {
		v, err := m.objectKey(o.proto, name, s, n)
		if f, ok := v.(*function); ok && err == nil && f.this == any(o.proto) {
			return m.bindTo(f, o, s, n)
		}
		return v, err
	}
	return undefined, nil
}

// inherits reports whether an object has something from what it was made on (JavaScript).
func (o *object) inherits(name string) bool {
	for p, n := o.proto, 0; p != nil && n < 32; p, n = p.proto, n+1 {
		if p.cells[name] != nil {
			return true
		}
	}
	return false
}

// filledFromOutside reports whether the objects of a class get their fields from
// a library.
func filledFromOutside(base *opaque) bool {
	return base != nil && (strings.HasSuffix(base.path, "BaseSettings") || strings.HasSuffix(base.path, "BaseModel") || strings.HasSuffix(base.path, "Base.Settings"))
}

// classKey looks for something of a class or of those that it comes from: of the
// class itself, or of its objects.
func classKey(c *class, name string, static bool) (any, bool) {
	for _, x := range c.line() {
		from := x.methods
		if static {
			from = x.statics
		}
		if from != nil {
			if v, ok := from.get(name); ok {
				return v, true
			}
		}
	}
	return nil, false
}

// line lists a class and the classes of the tree that it comes from, in the order
// in which they are asked.
func (c *class) line() (list []*class) {
	seen := 0
	var add func(c *class)
	add = func(c *class) {
		if seen++; c == nil || seen > 200 {
			return
		}
		if i := slices.Index(list, c); i >= 0 { // one that several come from is asked after them
			list = slices.Delete(list, i, i+1)
		}
		list = append(list, c)
		for _, b := range c.bases {
			if base, ok := b.(*class); ok {
				add(base)
			}
		}
	}
	add(c)
	return list
}

// outer is the class from outside that a class comes from; nil for none.
func outer(c *class) *opaque {
	for _, x := range c.line() {
		for _, b := range x.bases {
			if b, ok := b.(*opaque); ok && b.path != "object" && !strings.HasPrefix(b.path, "typing.") && !strings.HasPrefix(b.path, "abc.") {
				return b
			}
		}
	}
	return nil
}

// method is a function that the class of an object has; nil for none.
func (m *machine) method(o *object, name string) *function {
	if o.class == nil {
		return nil
	}
	for _, static := range []bool{false, true} {
		if v, ok := classKey(o.class, name, static); ok {
			f, _ := v.(*function)
			return f
		}
	}
	return nil
}

func (m *machine) setKey(base any, name string, v any, s *scope, n *code.Node) error {
	switch b := base.(type) {
	case *proxied:
		return m.proxySet(b, name, v, s, n)
	case *envMap:
		if !known(v) {
			return giveUp("what a variable is set to")
		}
		m.env.put(name, show(v))
	case *object:
		if b.frozen && javascript(s.module.file.Lang) { // ECMAScript 2026, 10.1.9
			if strictMode(s.module.file) {
				return raise("TypeError", "Cannot assign to read only property '"+name+"' of object")
			}
			return nil
		}
		if javascript(s.module.file.Lang) {
			if f := b.setters[name]; f != nil {
				_, err := m.call(f, b, []any{v}, nil, spot{s.module.file, n})
				return err
			}
			if c := b.cells[name]; c != nil {
				if f, ok := c.v.(*function); ok && f.getter { // there is nothing that sets it
					if strictMode(s.module.file) {
						return raise("TypeError", "Cannot set property "+name+" of #<Object> which has only a getter")
					}
					return nil
				}
			}
		}
		if b.class != nil && b.class.methods != nil && javascript(s.module.file.Lang) && b.cells[name] == nil {
			if f, ok := classKey(b.class, code.Setter+name, false); ok {
				_, err := m.call(f, b, []any{v}, nil, spot{s.module.file, n})
				return err
			}
		}
		if s.python() && b.class != nil && !b.class.builtin {
			if f := m.method(b, "__setattr__"); f != nil {
				_, err := m.call(f, b, []any{name, v}, nil, spot{s.module.file, n})
				return err
			}
			if done, err := m.describes(b, name, v, s, n); done || err != nil {
				return err
			}
		}
		b.set(name, v)
	case *function:
		if b.props == nil {
			b.props = newObject()
		}
		b.props.set(name, v)
	case *class:
		b.statics.set(name, v)
	case *super:
		for _, c := range b.next() {
			if f, ok := classKey(c, code.Setter+name, false); ok {
				_, err := m.call(f, b.this, []any{v}, nil, spot{s.module.file, n})
				return err
			}
		}
		if o, ok := b.this.(*object); ok {
			o.set(name, v)
			return nil
		}
		return m.setKey(b.this, name, v, s, n)
	case *module:
		b.top.declare(name, v)
	case *opaque:
		if b.path != "" {
			if b.props == nil {
				b.props = newObject()
			}
			b.props.set(name, v)
		}
	case *list:
		if name == "length" {
			if f, ok := v.(float64); ok && int(f) <= len(b.items) && f >= 0 {
				b.items = b.items[:int(f)]
			}
		}
	}
	return nil
}

func (m *machine) index(base any, n *code.Node, s *scope) (any, error) {
	kn := n.Kid(1)
	if kn.Is(code.Unknown) && (kn.Name == code.Rest1 || kn.Name == code.Slice) {
		return m.slice(base, kn, s)
	}
	k, err := m.eval(kn, s)
	if err != nil {
		return nil, err
	}
	if o, ok := k.(*opaque); ok {
		if b, isO := base.(*opaque); isO && b.path != "" {
			return &opaque{path: b.path + "[]", recv: b}, nil
		}
		return dontKnow("an element chosen by " + o.String()), nil
	}
	switch b := base.(type) {
	case *list:
		i, ok := toNumber(k)
		if !ok || i != float64(int(i)) {
			if name, isText := k.(string); isText {
				return m.key(base, name, s, n)
			}
			return undefined, nil
		}
		if i < 0 && s.python() {
			i += float64(len(b.items))
		}
		if i < 0 || i >= float64(len(b.items)) {
			if s.python() {
				return nil, certainly("IndexError", "list index out of range")
			}
			return undefined, nil
		}
		return b.items[int(i)], nil
	case string:
		i, ok := toNumber(k)
		r := []rune(b)
		if ok && i < 0 && s.python() {
			i += float64(len(r))
		}
		if !ok || i != float64(int(i)) || i < 0 || i >= float64(len(r)) {
			if s.python() {
				return nil, raise("IndexError", "string index out of range")
			}
			return undefined, nil
		}
		return string(r[int(i)]), nil
	case *envMap:
		name := show(k)
		if v, ok := m.lookup(name, spot{s.module.file, n}); ok {
			return v, nil
		}
		if s.python() {
			return nil, raise("KeyError", name)
		}
		return undefined, nil
	case *object:
		name := keyText(k)
		if s.python() {
			if f := m.method(b, "__getitem__"); f != nil {
				return m.call(f, b, []any{k}, nil, spot{s.module.file, n})
			}
			if b.class != nil && b.class.data {
				items, _ := m.items(b, s)
				if i, ok := toNumber(k); ok && i >= 0 && i < float64(len(items)) {
					return items[int(i)], nil
				}
			}
			if b.class != nil && b.class.name == "Section" && b.class.builtin {
				name = strings.ToLower(name)
			}
			if b.mapping != nil {
				if v, ok := b.mapping.get(name); ok {
					return v, nil
				}
				if f := m.method(b, "__missing__"); f != nil {
					return m.call(f, b, []any{k}, nil, spot{s.module.file, n})
				}
				return nil, raise("KeyError", name)
			}
			if v, ok := b.get(name); ok {
				if t, isText := v.(string); isText && b.class != nil && b.class.name == "Section" && b.class.builtin {
					if t, ok = b.interpolated(t, 0); !ok {
						return nil, giveUp("settings that are put together")
					}
					return t, nil
				}
				return v, nil
			}
			if c := b.cells[factory]; c != nil {
				v, err := m.call(c.v, undefined, nil, nil, spot{s.module.file, n})
				if err == nil {
					b.set(name, v)
				}
				return v, err
			}
			return nil, raise("KeyError", name)
		}
		return m.objectKey(b, name, s, n)
	case *class:
		if b.enum {
			if v, ok := b.statics.get(show(k)); ok {
				return v, nil
			}
			return nil, raise("KeyError", show(k))
		}
		if name, ok := k.(string); ok {
			return m.key(b, name, s, n)
		}
		return b, nil // a type with its parameters
	case *opaque:
		if b.path != "" {
			if name, ok := k.(string); ok && (!s.python() || b.props != nil && b.props.cells[name] != nil) {
				return m.opaqueKey(b, name)
			}
			return &opaque{path: b.path + "[]", recv: b}, nil
		}
		return b, nil
	case nil, undef:
		return nil, m.ofNothing(base, show(k), s, n)
	case globalNames:
		if c := b.top.vars[keyText(k)]; c != nil {
			return m.read(c)
		}
		return nil, raise("KeyError", keyText(k))
	case *module, *function, *super, *proxied:
		return m.key(base, keyText(k), s, n)
	}
	return undefined, nil
}

func (m *machine) slice(base any, kn *code.Node, s *scope) (any, error) {
	size := 0
	switch b := base.(type) {
	case *list:
		size = len(b.items)
	case string:
		size = len([]rune(b))
	default:
		return dontKnow("a part of what is not known"), nil
	}
	places, err := m.places(kn, size, s)
	if err != nil {
		return nil, err
	}
	switch b := base.(type) {
	case *list:
		l := &list{items: make([]any, 0, len(places)), tuple: b.tuple}
		for _, i := range places {
			l.items = append(l.items, b.items[i])
		}
		return l, nil
	case string:
		r, out := []rune(b), make([]rune, 0, len(places))
		for _, i := range places {
			out = append(out, r[i])
		}
		return string(out), nil
	}
	return nil, nil
}

// places are those that a part of something takes (Python 3.14 language reference, 6.3.3).
func (m *machine) places(kn *code.Node, size int, s *scope) (list []int, err error) {
	given, has := [3]int{}, [3]bool{}
	for i, k := range kn.Kids {
		if k.Is(code.Undefined) || i > 2 {
			continue
		}
		v, err := m.eval(k, s)
		if err != nil {
			return nil, err
		}
		if v == nil && s.python() {
			continue
		}
		f, ok := toNumber(v)
		if !ok || i > 1 && (!s.python() || f == 0) {
			return nil, giveUp("a part of a list")
		}
		given[i], has[i] = int(f), true
	}
	step := 1
	if has[2] {
		step = given[2]
	}
	from, to := 0, size
	if step < 0 {
		from, to = size-1, -1
	}
	fit := func(i, low, high int) int {
		if i < 0 {
			i += size
		}
		return max(low, min(high, i))
	}
	low, high := 0, size
	if step < 0 {
		low, high = -1, size-1
	}
	if has[0] {
		from = fit(given[0], low, high)
	}
	if has[1] {
		to = fit(given[1], low, high)
	}
	for i := from; step > 0 && i < to || step < 0 && i > to; i += step {
		list = append(list, i)
	}
	return list, m.use(len(list))
}

// setSlice puts other elements in the place of a part of a list.
func (m *machine) setSlice(base any, kn *code.Node, v any, s *scope) error {
	b, ok := base.(*list)
	if !ok || len(kn.Kids) > 2 && !kn.Kids[2].Is(code.Undefined) {
		return giveUp("a part that is set")
	}
	items, err := m.items(v, s)
	if err != nil {
		return err
	}
	head := &code.Node{Kind: code.Unknown, Name: code.Slice, Kids: []*code.Node{{Kind: code.Undefined}, kn.Kid(0)}}
	before, err := m.places(head, len(b.items), s)
	if err != nil {
		return err
	}
	if kn.Kid(0).Is(code.Undefined) {
		before = nil
	}
	part, err := m.places(kn, len(b.items), s)
	if err != nil {
		return err
	}
	from := len(before)
	b.items = slices.Concat(b.items[:from:from], items, b.items[from+len(part):])
	return nil
}

func (m *machine) setIndex(base, k, v any, s *scope, n *code.Node) error {
	if _, env := base.(*envMap); env && s.python() {
		if _, isText := v.(string); !isText {
			if err, certain := mistaken(v, "", "TypeError", "str expected").(*thrown); certain && known(v) {
				return err
			}
		}
	}
	if !known(k) {
		return undecided("an element that is not known is set")
	}
	if l, ok := base.(*list); ok {
		f, isNum := toNumber(k)
		if !isNum || f != float64(int(f)) || f > maxItems || f < -maxItems {
			return giveUp("an element of a list")
		}
		if f < 0 {
			f += float64(len(l.items))
		}
		for int(f) >= len(l.items) && !s.python() {
			l.items = append(l.items, undefined)
		}
		if f < 0 || int(f) >= len(l.items) {
			return raise("IndexError", "list assignment index out of range")
		}
		l.items[int(f)] = v
		return nil
	}
	if o, ok := base.(*object); ok && s.python() {
		if f := m.method(o, "__setitem__"); f != nil {
			_, err := m.call(f, o, []any{k, v}, nil, spot{s.module.file, n})
			return err
		}
		if o.mapping != nil {
			o.mapping.set(keyText(k), v)
			return nil
		}
	}
	if g, ok := base.(globalNames); ok {
		base = g.module
	}
	return m.setKey(base, keyText(k), v, s, n)
}

// class makes a class of the tree.
func (m *machine) class(n *code.Node, s *scope) (*class, error) {
	c := &class{name: n.Name, node: n, scope: s, statics: newObject(), methods: newObject()}
	if s.python() {
		m.family = append(m.family, c)
	}
	mixed, flags := false, false
	var given map[string]any // for __init_subclass__
	for _, b := range n.Kid(0).Kids {
		if b.Is(code.Keyword) {
			if b.Name == "metaclass" && s.python() {
				v, err := m.eval(b.Kid(0), s)
				if err != nil {
					return nil, err
				}
				c.meta, _ = v.(*class)
			} else if s.python() {
				v, err := m.eval(b.Kid(0), s)
				if err != nil {
					return nil, err
				}
				if given == nil {
					given = map[string]any{}
				}
				given[b.Name] = v
			}
			continue
		}
		v, err := m.eval(b, s)
		if err != nil {
			return nil, err
		}
		switch v := v.(type) {
		case *class:
			c.bases = append(c.bases, v)
			if c.meta == nil {
				c.meta = v.meta
			}
			c.data = c.data || v.data
			c.enum = c.enum || v.enum
		case *opaque:
			c.bases = append(c.bases, v)
			switch v.path {
			case "typing.NamedTuple":
				c.data = true
			case "enum.Enum":
				c.enum = true
			case "enum.Flag", "enum.IntFlag":
				c.enum, mixed, flags = true, true, true
			case "enum.IntEnum", "enum.StrEnum":
				c.enum, mixed = true, true
			case "str", "int":
				mixed = true
			}
		case *function:
			return nil, giveUp("a class that comes from a function")
		}
	}
	in := s.inner()
	in.own, in.static = s.python(), s.module.file.Inside[n]
	if in.static == nil {
		in.static = s.static
	}
	in.this = c
	if n.Name != "" && !s.python() {
		in.declare(n.Name, c)
	}
	kids := n.Kid(1).Kids
	if javascript(s.module.file.Lang) { // what is static runs once all else is there
		kids = slices.Clone(kids)
		later := func(k *code.Node) int {
			if k.Is(code.Func) || k.Is(code.Bind) && k.Flag&code.Static == 0 {
				return 0
			}
			return 1
		}
		slices.SortStableFunc(kids, func(a, b *code.Node) int { return later(a) - later(b) })
	}
	for _, k := range kids {
		switch {
		case k.Is(code.Func):
			f := m.function(k, s)
			if !s.python() {
				f.scope = in
			}
			f.home = c
			v := any(f)
			if s.python() {
				var err error
				if v, err = m.decorated(k, f, in); err != nil {
					return nil, err
				}
				in.declare(k.Name, v)
				c.statics.set(k.Name, v)
			} else if k.Flag&code.Static != 0 {
				c.statics.set(k.Name, f)
			} else {
				c.methods.set(k.Name, f)
			}
		case k.Is(code.Bind) && !s.python():
			if k.Flag&code.Static == 0 {
				c.fields = append(c.fields, k)
				if len(k.Kids) > 2 && javascript(s.module.file.Lang) {
					if err := m.decorateField(c, k, in); err != nil {
						return nil, err
					}
				}
				continue
			}
			v, err := m.eval(k.Kid(1), in)
			if err != nil {
				return nil, err
			}
			c.statics.set(k.Kid(0).Name, v)
		case k.Is(code.Bind) && k.Kid(1) == nil: // only its type
			c.fields = append(c.fields, k)
		default:
			if !s.python() {
				if err := m.block([]*code.Node{k}, in); err != nil {
					return nil, err
				}
				continue
			}
			if k.Is(code.Bind) {
				c.fields = append(c.fields, k)
			}
			if _, err := m.statement(k, in); err != nil {
				return nil, err
			}
			for _, name := range slices.Sorted(maps.Keys(in.vars)) {
				c.statics.set(name, in.vars[name].v)
			}
		}
	}
	if s.python() {
		for _, name := range slices.Clone(c.statics.keys) {
			o, ok := c.statics.cells[name].v.(*object)
			if !ok {
				continue
			}
			if f := m.method(o, "__set_name__"); f != nil {
				if _, err := m.call(f, o, []any{c, name}, nil, spot{s.module.file, n}); err != nil {
					return nil, err
				}
			}
		}
		for _, b := range c.bases {
			base, ok := b.(*class)
			if !ok {
				continue
			}
			if v, ok := classKey(base, "__init_subclass__", true); ok {
				if f, isF := v.(*function); isF {
					w := *f
					w.static = true
					if _, err := m.call(&w, undefined, []any{c}, given, spot{s.module.file, n}); err != nil {
						return nil, err
					}
				}
				break
			}
		}
	}
	if c.meta != nil {
		if f, ok := classKey(c.meta, "__new__", true); ok {
			d := newObject()
			d.dict, d.keys, d.cells = true, c.statics.keys, c.statics.cells
			m.making = append(m.making, c)
			v, err := m.call(unbound(f), undefined, []any{c.meta, c.name, &list{items: c.bases, tuple: true}, d}, given, spot{s.module.file, n})
			m.making = m.making[:len(m.making)-1]
			if err != nil {
				return nil, err
			}
			if v != any(c) {
				return nil, giveUp("a class that a metaclass makes")
			}
		}
		if f, ok := classKey(c.meta, "__init__", true); ok {
			d := newObject()
			d.dict, d.keys, d.cells = true, c.statics.keys, c.statics.cells
			if _, err := m.call(unbound(f), c, []any{c.name, &list{items: c.bases, tuple: true}, d}, nil, spot{s.module.file, n}); err != nil {
				return nil, err
			}
		}
		if _, ok := classKey(c.meta, "__prepare__", true); ok {
			return nil, giveUp("a class that a metaclass makes")
		}
	}
	if s.python() && c.enum && flags { // numbers that are put together
		next := integer(1)
		for _, name := range slices.Clone(c.statics.keys) {
			switch v := c.statics.cells[name].v.(type) {
			case *opaque:
				if v.path == "enum.auto()" {
					c.statics.set(name, next)
					next <<= 1
				}
			case integer:
				for next <= v {
					next <<= 1
				}
			}
		}
		return c, nil
	}
	if s.python() && c.enum {
		last := integer(0)
		for _, name := range slices.Clone(c.statics.keys) {
			v := c.statics.cells[name].v
			if _, fn := v.(*function); fn || strings.HasPrefix(name, "_") {
				continue
			}
			if mixed { // its members are what they are; those that are counted come after the last
				switch x := v.(type) {
				case integer:
					last = x
				case *opaque:
					if x.path == "enum.auto()" {
						last++
						c.statics.set(name, last)
						if base := outer(c); base != nil && strings.HasSuffix(base.path, "StrEnum") {
							c.statics.set(name, strings.ToLower(name))
						}
					}
				}
				continue
			}
			if o, ok := v.(*opaque); ok {
				if o.path == "enum.auto()" {
					last++
					v = last
				} else {
					continue
				}
			}
			if i, ok := v.(integer); ok {
				last = i
			}
			member := newObject()
			member.class = c
			member.set("name", name)
			member.set("value", v)
			c.statics.set(name, member)
		}
	}
	return c, nil
}

// create makes an object of a class.
func (m *machine) create(c *class, args []any, keys map[string]any, at spot) (any, error) {
	if m.depth++; m.depth > maxDepth*2 {
		return nil, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	if c.meta != nil {
		if f, ok := classKey(c.meta, "__call__", true); ok {
			return m.call(unbound(f), c, args, keys, at)
		}
	}
	return m.build(c, args, keys, at)
}

// build makes an object, past what a metaclass does.
func (m *machine) build(c *class, args []any, keys map[string]any, at spot) (any, error) {
	if c.enum && len(args) == 1 {
		for _, k := range c.statics.keys {
			v := c.statics.cells[k].v
			x := v
			if o, ok := v.(*object); ok {
				x, _ = o.get("value")
			} else if _, fn := v.(*function); fn {
				continue
			}
			if same, ok := equals(x, args[0], true); ok && same {
				return v, nil
			}
		}
		if f, ok := classKey(c, "_missing_", true); ok && !c.building {
			f, _ := f.(*function)
			if f == nil {
				return nil, giveUp("a member that is missing")
			}
			w, given := *f, []any{args[0]}
			if w.classOf {
				w.this = c
			} else {
				w.static, given = true, []any{c, args[0]}
			}
			c.building = true
			v, err := m.call(&w, undefined, given, nil, at)
			c.building = false
			if err != nil || v != nil {
				return v, err
			}
		}
		return nil, raise("ValueError", "no member of "+c.name)
	}
	o := newObject()
	o.class, o.made = c, &at
	if c.builtin {
		if len(args) > 0 {
			o.set("message", args[0])
		}
		return o, nil
	}
	py := c.scope.python()
	if !py {
		if err := m.construct(c, o, args, at); err != nil {
			if l, ok := err.(*leave); ok && l.kind == "return" {
				return l.v, nil
			}
			return nil, err
		}
		return o, nil
	}
	if v, ok := classKey(c, "__new__", true); ok {
		f, isF := v.(*function)
		if !isF {
			return nil, giveUp("how %s is made", c.name)
		}
		w := *f
		w.static = true
		x, err := m.call(&w, undefined, append([]any{c}, args...), keys, at)
		if err != nil {
			return nil, err
		}
		if o, ok = x.(*object); !ok || o.class != c {
			return x, nil
		}
	}
	if base := outer(c); base != nil && dictBases[base.path] {
		o.mapping = newObject()
		o.mapping.dict = true
	}
	if v, ok := classKey(c, "__init__", true); ok {
		f, isF := v.(*function)
		if !isF {
			return nil, giveUp("how %s is made", c.name)
		}
		if _, err := m.call(f, o, args, keys, at); err != nil {
			return nil, err
		}
		return o, nil
	}
	if c.data {
		return o, m.fill(c, o, args, keys, at)
	}
	if o.mapping != nil {
		return o, m.mapped(o, args, keys, at)
	}
	if done, err := m.pdBuild(c, o, args, keys, at); done || err != nil {
		return o, err
	}
	if base := outer(c); base != nil {
		if base.path == "Exception" || parents[base.path] != "" {
			if len(args) > 0 {
				o.set("message", args[0])
			}
			return o, nil
		}
		ext := &opaque{path: base.path + "()", recv: base, args: args, keys: keys}
		for _, b := range c.bases {
			if b, ok := b.(*opaque); ok {
				m.note(b, args, keys, at)
			}
		}
		o.set("\x00base", ext)
	}
	return o, nil
}

// construct runs the constructors of a class of JavaScript on an object.
func (m *machine) construct(c *class, o *object, args []any, at spot) error {
	fields := func() error {
		in := c.scope.inner()
		in.this, in.static = o, c.scope.module.file.Inside[c.node]
		in.fn = &function{home: c}
		for _, k := range c.fields {
			v := any(undefined)
			if k.Kid(1) != nil {
				var err error
				if v, err = m.eval(k.Kids[1], in); err != nil {
					return err
				}
			}
			for _, f := range c.starts[k] {
				w, err := m.call(f, o, []any{v}, nil, spot{c.scope.module.file, k})
				if err != nil {
					return err
				}
				v = w
			}
			o.set(k.Kid(0).Name, v)
		}
		return nil
	}
	var base *class
	for _, b := range c.bases {
		base, _ = b.(*class)
	}
	f, _ := c.methods.cells["constructor"]
	if f == nil {
		if base != nil {
			if err := m.construct(base, o, args, at); err != nil {
				return err
			}
		} else if len(c.bases) > 0 {
			if b, ok := c.bases[0].(*opaque); ok {
				o.set("message", first(args))
				m.note(b, args, nil, at)
			}
		}
		return fields()
	}
	fn := f.v.(*function)
	if len(c.bases) == 0 {
		if err := fields(); err != nil {
			return err
		}
	} else {
		fn2 := *fn // super(…) runs the base and the fields
		fn2.props = newObject()
		fn2.props.set("\x00super", &function{native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			if base != nil {
				if err := m.construct(base, o, args, at); err != nil {
					return nil, err
				}
			} else if len(args) > 0 {
				o.set("message", args[0])
			}
			return undefined, fields()
		}})
		fn = &fn2
	}
	seen := fn.scope.inner()
	seen.this = o
	for i, p := range fn.node.Kid(0).Kids { // parameters that are fields
		v := any(undefined)
		if i < len(args) {
			v = args[i]
		}
		if p.Flag&code.Exported != 0 {
			if v == any(undefined) && p.Kid(0) != nil {
				var err error
				if v, err = m.eval(p.Kids[0], seen); err != nil {
					return err
				}
			}
			o.set(p.Name, v)
		}
		if p.Name != "" { // those that follow may be made of it
			seen.declare(p.Name, v)
		}
	}
	_, err := m.call(fn, o, args, nil, at)
	return err
}

func first(args []any) any { return at2(args, 0) }

// fieldsOf lists the fields of a data class, those of its bases first.
func fieldsOf(c *class) []string {
	var names []string
	for _, x := range slices.Backward(c.line()) {
		for _, f := range x.fields {
			if text := x.scope.module.file.Text(f); strings.Contains(text, "ClassVar") || strings.Contains(text, "KW_ONLY") {
				continue
			}
			if name := f.Kid(0).Name; !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
		for _, t := range x.tupled {
			names = append(names, show(t))
		}
	}
	return names
}

// fill sets the fields of a data class.
func (m *machine) fill(c *class, o *object, args []any, keys map[string]any, at spot) error {
	names := fieldsOf(c)
	i := -1
	for _, name := range names {
		if d, ok := classKey(c, name, true); ok { // one that is not given
			if f, ok := d.(*opaque); ok && f.path == "dataclasses.field()" && f.keys["init"] == any(false) {
				if x, ok := f.keys["default"]; ok {
					o.set(name, x)
				} else if x, ok := f.keys["default_factory"]; ok {
					v, err := m.call(x, undefined, nil, nil, at)
					if err != nil {
						return err
					}
					o.set(name, v)
				}
				continue
			}
		}
		i++
		v, given := keys[name]
		if i < len(args) {
			v, given = args[i], true
		}
		if !given {
			d, ok := classKey(c, name, true)
			if !ok {
				return raise("TypeError", "a missing argument: "+name)
			}
			v = d
			if f, ok := d.(*opaque); ok && f.path == "dataclasses.field()" {
				if x, ok := f.keys["default"]; ok {
					v = x
				} else if x, ok := f.keys["default_factory"]; ok {
					var err error
					if v, err = m.call(x, undefined, nil, nil, at); err != nil {
						return err
					}
				} else {
					return raise("TypeError", "a missing argument: "+name)
				}
			}
		}
		o.set(name, v)
	}
	if len(args) > i+1 {
		return raise("TypeError", "too many arguments")
	}
	if f := m.method(o, "__post_init__"); f != nil {
		_, err := m.call(f, o, nil, nil, at)
		return err
	}
	return nil
}

// note keeps a call of something outside of the tree; stays says that the
// program does not come back from it.
func (m *machine) note(o *opaque, args []any, keys map[string]any, at spot) (stays bool) {
	if o.path == "" || m.noted == nil {
		return false
	}
	callee := o.bare(at) // the path tells: what it was made with is worked out for few
	var recv *value.Value
	if o.self != nil && at.f.Lang == code.Go {
		recv = toValue(o.self, at)
		recv.Kind = value.Object
		callee.Recv = recv
	}
	keep, stays := m.noted(callee)
	if !keep || len(m.calls) >= maxCalls {
		return stays
	}
	if callee = o.external(at); recv != nil {
		callee.Recv = recv
	}
	c := Call{Path: o.path, Callee: callee, At: at.span(), Node: at.n, File: at.f, Keys: map[string]*value.Value{}, Recv: recv}
	nodes := at.n.Args()
	for i, a := range args {
		of := at
		if len(nodes) == len(args) { // where it is written
			of.n = nodes[i]
		}
		c.Args = append(c.Args, toValue(a, of))
	}
	for k, v := range keys {
		c.Keys[k] = toValue(v, at)
	}
	m.calls = append(m.calls, c)
	return stays
}

func atoi(s string) (int, bool) {
	i, err := strconv.Atoi(s)
	return i, err == nil
}

// decorateField calls the decorators of a field: what they give makes its first
// value (ECMAScript proposal "Decorators", stage 3, 2023-05; TypeScript 5.0).
func (m *machine) decorateField(c *class, k *code.Node, s *scope) error {
	for _, d := range slices.Backward(k.Kids[2:]) {
		v, err := m.eval(d, s)
		if err != nil {
			return err
		}
		f, ok := v.(*function)
		if !ok { // a framework's
			continue
		}
		ctx := newObject()
		ctx.set("kind", "field")
		ctx.set("name", k.Kid(0).Name)
		ctx.set("static", false)
		ctx.set("private", strings.HasPrefix(k.Kid(0).Name, "#"))
		ctx.set("metadata", newObject())
		out, err := m.call(f, undefined, []any{undefined, ctx}, nil, spot{s.module.file, d})
		if err != nil {
			return err
		}
		if w, ok := out.(*function); ok {
			if c.starts == nil {
				c.starts = map[*code.Node][]*function{}
			}
			c.starts[k] = append(c.starts[k], w)
		}
	}
	return nil
}
