package trace

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/value"
)

// Values of a program: nil (null, None), undef, bool, float64, integer (Python),
// string, and the kinds below.
type (
	undef struct{}
	// integer is a whole number of Python; a float64 there has a fraction.
	integer int64
	list    struct {
		unique bool // what is there is not put in again (Ruby)
		items  []any
		tuple  bool
		set    bool
		sorted bool // it keeps its items in order (Java)
		gen    bool // what a generator gives, all of it at once
	}
	// function is code of the tree, or something that is done here.
	function struct {
		name    string
		node    *code.Node
		scope   *scope
		this    any // what it belongs to
		bound   bool
		native  func(m *machine, this any, args []any, keys map[string]any, at spot) (any, error)
		props   *object
		getter  bool
		setter  *function // what a property of Python does when it is set
		static  bool
		classOf bool // it gets its class (classmethod)
		moved   bool // a block that is run for another object (Ruby)
		home    *class
		cli     *command           // it is a command of the command line
		marks   []*opaque          // what it is decorated with from outside (Python)
		awaits  bool               // a generator that stands for an async function
		memo    map[string]any     // what it gave, for a function that keeps that (Python)
		falls   map[*code.Node]any // what its parameters fall back to, worked out where it was defined (Python)
	}
	class struct {
		name    string
		bases   []any // *class or *opaque
		statics *object
		methods *object
		fields  []*code.Node
		scope   *scope
		node    *code.Node
		builtin bool
		data    bool // a data class, a named tuple
		enum    bool
		meta    *class // its metaclass (Python)
		outside bool   // of Go, from outside of the tree
		tupled  []any  // the names of the fields of a named tuple that a call makes

		starts   map[*code.Node][]*function // what decorators make of the first values of fields
		selfish  bool                       // its methods are its own too: a module of functions (Ruby)
		extended []*class
		building bool                 // a member of an enumeration is looked for
		readable map[string]bool      // which of its objects' variables are read from outside (Ruby)
		settings *object              // what dry-configurable keeps of it (Ruby)
		makers   map[string]*function // what makes the values of settings (Ruby)
	}
	// opaque is something that is not followed, by its path.
	opaque struct {
		path string
		recv *opaque
		args []any
		keys map[string]any
		why  string
		// props are the properties that the program sets.
		props *object
		sub   *function // a command of it is made
		self  *object   // whose method it is (Go)
		of    *class    // the class that it stands for (Java)
		fresh bool      // it is an object that was made: there, and nothing else
	}
	// promise is what an async function gives; it is settled at once.
	promise struct {
		v   any
		err *thrown
	}
	// pattern is a regular expression.
	pattern struct {
		v  *value.Value
		re *regexp.Regexp // once it has been compiled
	}
	// globalNames are the names of a module as a dictionary (Python).
	globalNames struct{ *module }
	// envMap is the environment.
	envMap struct{}
	// super is the base of a class as its methods see it.
	super struct {
		of   *class
		this any
	}
)

var undefined = undef{}

// object has properties in the order in which they were set.
type object struct {
	keys    []string
	cells   map[string]*cell
	class   *class
	dict    bool    // a dictionary, a Map
	holds   string  // the type of what a map of Go holds
	made    *spot   // where it was made, for objects of classes
	other   any     // what it gives for keys that it does not have (Ruby)
	proto   *object // what it was made on with Object.create (JavaScript)
	outside *opaque // the class from outside whose prototype it has (JavaScript)
	// frozen says that its own properties stay as they are (JavaScript).
	frozen bool
	// command and option are those of commander that the program sees as this object.
	command *jsCommand
	option  *jsOption
	parser  *argParser           // a parser of command lines (Python)
	zod     *zodSchema           // a schema that the program sees as this object
	yup     *yupSchema           // one of yup
	setters map[string]*function // what is called where a property is set (JavaScript)
	fault   bool                 // an error that the language raises, not one that the program makes
	mapping *object              // the dictionary that it is: its class comes from dict (Python)
}

func newObject() *object { return &object{cells: map[string]*cell{}} }

func (o *object) get(k string) (any, bool) {
	c := o.cells[k]
	if c == nil {
		return undefined, false
	}
	return c.v, true
}

func (o *object) set(k string, v any) {
	if c := o.cells[k]; c != nil {
		c.v = v
		return
	}
	o.keys = append(o.keys, k)
	o.cells[k] = &cell{v: v}
}

func (o *object) link(k string, c *cell) {
	if o.cells[k] == nil {
		o.keys = append(o.keys, k)
	}
	o.cells[k] = c
}

func (o *object) remove(k string) {
	if o.cells[k] != nil {
		delete(o.cells, k)
		o.keys = slices.DeleteFunc(o.keys, func(s string) bool { return s == k })
	}
}

// cell holds a variable or a property; one that is linked is read in the module
// that it comes from.
type cell struct {
	v     any
	from  *module
	name  string
	lazy  *code.Node // of Go: it is worked out when it is first read
	fixed bool       // a const of JavaScript
	typ   string     // the type that what it is set to wraps to (Java)
	scope *scope
}

func (m *machine) read(c *cell) (any, error) {
	if c.from != nil {
		return m.taken(c.from, c.name)
	}
	if n := c.lazy; n != nil {
		c.lazy = nil
		v, err := m.eval(n, c.scope)
		if err != nil {
			return nil, err
		}
		c.v = v
	}
	return c.v, nil
}

// scope is a stretch of the program in which names are known.
type scope struct {
	vars   map[string]*cell
	up     *scope
	module *module
	static *code.Scope // the same for package value
	this   any
	fn     *function
	awaits bool            // of a generator that stands for an async function (JavaScript)
	own    bool            // of a function or a file: a Python name is set here
	global map[string]bool // names that are not the function's own

	// Of Ruby: what a method was given, and scopes of lambdas and of blocks that
	// are run for another object.
	block     any
	given     []any
	givenKeys *object
	lambda    bool
	moved     bool
}

func (s *scope) declare(name string, v any) { s.vars[name] = &cell{v: v} }

func (s *scope) find(name string) *cell {
	for x := s; x != nil; x = x.up {
		if c := x.vars[name]; c != nil {
			return c
		}
	}
	return nil
}

func (s *scope) inner() *scope {
	return &scope{vars: map[string]*cell{}, up: s, module: s.module, static: s.static, this: s.this, fn: s.fn}
}

// awaiting reports whether yield stands for await: what compilers make of an async
// function.
func (s *scope) awaiting() bool {
	for x := s; x != nil; x = x.up {
		if x.awaits || x.own {
			return x.awaits
		}
	}
	return false
}

func (s *scope) python() bool { return s.module.file.Lang == code.Python }
func (s *scope) ruby() bool   { return s.module.file.Lang == code.Ruby }

// braced reports whether a block has names of its own.
func (s *scope) braced() bool {
	l := s.module.file.Lang
	return javascript(l) || l == code.Java
}

// truth says whether a value counts as true; ok is false where that is not known.
func (s *scope) truth(v any) (yes, ok bool) {
	if s.java() {
		yes, ok := v.(bool)
		return yes, ok
	}
	if s.php() {
		return phTruth(v)
	}
	if s.ruby() {
		if o, isOpaque := v.(*opaque); isOpaque {
			return truth(o, false)
		}
		return v != nil && v != any(false) && v != any(undefined), true
	}
	return truth(v, s.python())
}

// known reports whether a value is followed.
func known(v any) bool {
	_, ok := v.(*opaque)
	return !ok
}

func dontKnow(why string) *opaque { return &opaque{why: why} }

func (o *opaque) String() string {
	if o.path != "" {
		return o.path
	}
	return o.why
}

// show writes a value as text of JavaScript.
func show(v any) string { return showIn(v, &reach{}) }

func showIn(v any, r *reach) string {
	switch v := v.(type) {
	case nil:
		return "null"
	case undef:
		return "undefined"
	case bool:
		return strconv.FormatBool(v)
	case float64:
		return number(v)
	case integer:
		return strconv.FormatInt(int64(v), 10)
	case string:
		return v
	case symbol:
		return string(v)
	case mark:
		return "Symbol(" + v.id[strings.IndexByte(v.id, ' ')+1:] + ")"
	case character:
		return string(rune(v))
	case *content:
		return v.text
	case *list:
		if !r.in() {
			return ""
		}
		defer r.out()
		parts := make([]string, len(v.items))
		for i, x := range v.items {
			if x != nil && x != any(undefined) {
				parts[i] = showIn(x, r)
			}
		}
		return strings.Join(parts, ",")
	}
	return "[object Object]"
}

// reach limits how deep and how far a value is looked into: lists and objects may
// hold themselves, or each the next one many times.
type reach struct{ depth, seen int }

const (
	reachDepth = 100
	reachSeen  = 50_000
)

// in tells whether to go on one level below; out is called after it held.
func (r *reach) in() bool {
	if r.depth >= reachDepth || r.seen >= reachSeen {
		return false
	}
	r.depth++
	r.seen++
	return true
}

func (r *reach) out() { r.depth-- }

// deeper is called where the walk goes into what a value holds; higher after it.
func (m *machine) deeper() error {
	if m.level >= reachDepth {
		return spent("a value that holds itself, or is nested too deep")
	}
	if err := m.use(64); err != nil {
		return err
	}
	m.level++
	return nil
}

func (m *machine) higher() { m.level-- }

func number(f float64) string {
	switch {
	case math.IsNaN(f):
		return "NaN"
	case math.IsInf(f, 1):
		return "Infinity"
	case math.IsInf(f, -1):
		return "-Infinity"
	}
	if x := math.Abs(f); x >= 1e21 || x < 1e-6 && x > 0 { // ECMA-262 2026, 6.1.6.1.20
		t := strconv.FormatFloat(f, 'e', -1, 64)
		i := strings.IndexByte(t, 'e')
		return t[:i+2] + strings.TrimLeft(t[i+2:], "0")
	}
	if f == 0 {
		return "0"
	}
	return strconv.FormatFloat(f, 'f', -1, 64)
}

// pyShow writes a value as str() of Python does.
func pyShow(v any) string {
	switch v := v.(type) {
	case nil:
		return "None"
	case bool:
		return map[bool]string{true: "True", false: "False"}[v]
	case float64:
		s := strconv.FormatFloat(v, 'f', -1, 64)
		if !strings.Contains(s, ".") {
			s += ".0"
		}
		return s
	}
	return show(v)
}

// truth says whether a value counts as true; ok is false where it is not known.
func truth(v any, py bool) (yes, ok bool) {
	switch v := v.(type) {
	case nil, undef:
		return false, true
	case bool:
		return v, true
	case float64:
		return v != 0 && !math.IsNaN(v), true
	case integer:
		return v != 0, true
	case string:
		return v != "", true
	case *list:
		return !py || len(v.items) > 0, true
	case *object:
		return !py || !v.dict || len(v.keys) > 0, true
	case *opaque:
		// A package, a class, a function of one is there; what a call gives is not
		// known.
		return true, v.certain() || v.fresh && !counting[v.path]
	}
	return true, true
}

// toNumber converts as Number() does.
func toNumber(v any) (float64, bool) {
	switch v := v.(type) {
	case float64:
		return v, true
	case integer:
		return float64(v), true
	case bool:
		if v {
			return 1, true
		}
		return 0, true
	case nil:
		return 0, true
	case undef:
		return math.NaN(), true
	case string:
		s := strings.TrimSpace(v)
		if s == "" {
			return 0, true
		}
		if n, err := strconv.ParseInt(s, 0, 64); err == nil && !strings.Contains(s, "_") && (len(s) < 2 || s[0] != '0' || strings.ContainsAny(s, "xXoObB")) {
			return float64(n), true
		}
		if f, err := strconv.ParseFloat(s, 64); err == nil && !strings.ContainsAny(s, "_xXpPnN") {
			return f, true
		}
		return math.NaN(), true
	case *list, *object:
		return toNumber(show(v))
	case *opaque:
		return 0, false
	}
	return math.NaN(), true
}

// toValue turns a value of the program into one of package value.
func toValue(v any, at spot) *value.Value { return (&turned{at: at}).value(v, 0) }

// turned counts what is turned into values of package value: what a program
// makes may hold itself.
type turned struct {
	plain bool // without what the program set on what is not followed
	at    spot
	n     int
}

const maxTurned = 2000

func (t *turned) value(v any, depth int) *value.Value {
	w := &value.Value{At: t.at.span()}
	_, inner := v.(*list)
	switch v.(type) {
	case *object, *opaque, *promise:
		inner = true
	}
	if t.n++; depth > 8 && inner || t.n > maxTurned {
		return value.NotKnown("nested too deep", w.At)
	}
	switch v := v.(type) {
	case nil:
		w.Kind = value.Null
	case undef:
		w.Kind = value.Undef
	case bool:
		if w.Kind = value.Bool; v {
			w.Num = 1
		}
	case float64:
		w.Kind, w.Num = value.Num, v
	case integer:
		w.Kind, w.Num = value.Num, float64(v)
	case string:
		w.Kind, w.Text = value.Str, v
	case symbol:
		w.Kind, w.Text = value.Str, string(v)
	case character:
		w.Kind, w.Text = value.Str, string(rune(v))
	case pyPath:
		w.Kind, w.Text = value.Str, string(v)
	case *content:
		w.Kind, w.Text = value.Str, v.text
	case *list:
		w.Kind = value.List
		for _, x := range v.items {
			w.Kids = append(w.Kids, t.value(x, depth+1))
		}
	case *object:
		if w.Kind = value.Object; v.class != nil && !v.dict {
			w.Kind, w.Text = value.Instance, v.class.name
		}
		if v.class != nil && v.class.data && t.at.f.Lang == code.Python && v.class.tuple() {
			w.Kind = value.List
			for _, k := range v.keys {
				w.Kids = append(w.Kids, t.value(v.cells[k].v, depth+1))
			}
			return w
		}
		for _, k := range v.keys {
			w.Keys, w.Kids = append(w.Keys, strings.TrimPrefix(k, symbolKey)), append(w.Kids, t.value(v.cells[k].v, depth+1))
		}
	case *function:
		w.Kind, w.Text = value.Func, v.name
	case *class:
		w.Kind, w.Text = value.Class, v.name
	case *opaque:
		if v.path == "" {
			return value.NotKnown(v.why, w.At)
		}
		return t.external(v, depth)
	case *promise:
		return t.value(v.v, depth+1)
	case *coroutine:
		return t.value(v.v, depth+1)
	default:
		return t.rsValue(v, w, depth)
	}
	return w
}

// tuple reports whether a class of Python is one of named tuples.
func (c *class) tuple() bool {
	for _, c := range c.line() {
		if len(c.tupled) > 0 || slices.ContainsFunc(c.bases, func(b any) bool {
			o, ok := b.(*opaque)
			return ok && o.path == "typing.NamedTuple"
		}) {
			return true
		}
	}
	return false
}

// bare is what is not followed as package value has it, without what it was given.
func (o *opaque) bare(at spot) *value.Value {
	w := &value.Value{Kind: value.External, Text: o.path, At: at.span()}
	for now, n := w, 0; o.recv != nil && n < 60; n++ {
		o = o.recv
		now.Recv = &value.Value{Kind: value.External, Text: o.path, At: w.At}
		now = now.Recv
	}
	return w
}

// external is what is not followed as package value has it.
func (o *opaque) external(at spot) *value.Value { return (&turned{at: at}).external(o, 0) }

func (t *turned) external(o *opaque, depth int) *value.Value {
	w := &value.Value{Kind: value.External, Text: o.path, At: t.at.span()}
	if t.n++; t.n > maxTurned || depth > 60 {
		return w
	}
	if o.recv != nil {
		w.Recv = t.external(o.recv, depth+1)
	}
	for _, a := range o.args {
		w.Kids = append(w.Kids, t.value(a, max(depth, 5)+1))
	}
	if len(o.keys) > 0 {
		keys := map[string]*value.Value{}
		for k, a := range o.keys {
			keys[k] = t.value(a, max(depth, 5)+1)
		}
		w.Name(keys)
	}
	if !t.plain && o.props != nil && len(o.props.keys) > 0 {
		w.Props = t.value(o.props, max(depth, 5)+1)
	}
	return w
}

// fromValue turns a value of package value into one of the program.
func (m *machine) fromValue(v *value.Value, depth int) (any, error) {
	if v == nil {
		return undefined, nil
	}
	if depth > 40 {
		return nil, spent("nested too deep")
	}
	if v.Failed() {
		return raise("Error", "a value does not fit").(*thrown).v, nil
	}
	switch v.Kind {
	case value.List:
		l := &list{}
		for _, k := range v.Kids {
			x, err := m.fromValue(k, depth+1)
			if err != nil {
				return nil, err
			}
			l.items = append(l.items, x)
		}
		return l, nil
	case value.Object:
		o := newObject()
		for i, k := range v.Keys {
			if k == "..." {
				return nil, undecided("properties that are not known")
			}
			x, err := m.fromValue(v.Kids[i], depth+1)
			if err != nil {
				return nil, err
			}
			o.set(k, x)
		}
		return o, nil
	case value.Cond:
		t := v.Kids[0].Under(m.now())
		if yes, ok := t.Truth(v.Py); ok && !t.Raise {
			if yes {
				return m.fromValue(v.Kids[1], depth+1)
			}
			return m.fromValue(v.Kids[2], depth+1)
		}
	}
	o := v.Under(m.now())
	switch {
	case o.Raise:
		return nil, raise("Error", o.Text)
	case o.Kind == value.Str:
		return o.Text, nil
	case o.Kind == value.Num:
		return o.Num, nil
	case o.Kind == value.Bool:
		return o.Num != 0, nil
	case o.Kind == value.Null:
		return nil, nil
	case o.Kind == value.Undef:
		return undefined, nil
	}
	return nil, giveUp("%s", firstOf(o.Text, "something that is not followed"))
}

func firstOf(a, b string) string {
	if a != "" {
		return a
	}
	return b
}

// now is the environment as it is.
func (m *machine) now() value.Environ {
	return value.Environ{Set: m.env.cells, Worker: m.set.Worker, Seen: m.env.seen}
}
