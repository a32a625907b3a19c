package value

import (
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// Loader finds the files that imports lead to. It is what a component's
// runtime knows about modules.
type Loader interface {
	// Resolve says which file of the tree an import leads to; ok is false for
	// packages from outside.
	Resolve(from *code.File, module, name string) (file string, ok bool)
	// File gives a source file that has been read, nil where there is none.
	File(path string) *code.File
	// Data gives a data file (JSON and the like), nil where there is none.
	Data(path string) *document.Node
	// Text gives what a file holds as text; ok is false where there is none, and
	// where it is too large.
	Text(path string) (text string, ok bool)
	// Loaded lists the source files of the component read so far, in order.
	Loaded() []*code.File
	// Beside lists the files of a folder of the tree, in the order of names.
	Beside(dir string) []string
	// Folder reports whether the tree has a folder.
	Folder(dir string) bool
	// Mentioning lists them too, after all have been read that use the name or
	// import the file.
	Mentioning(name, file string) []*code.File
}

// Launch is a command that a program starts: its words, or a line that a shell reads.
type Launch struct {
	At    place.Span
	Words []*Value
	Line  string
	Dir   string            // the folder of the tree where it runs
	Env   map[string]string // the environment that it is given
	Waits bool              // the program waits for its end, or is replaced by it
}

// Eval evaluates expressions of one component. It keeps what it has worked
// out and is not safe for concurrent use.
type Eval struct {
	Loader   Loader
	Main     string   // the file that is run as the program
	Dir      string   // the folder it runs in
	Args     []*Value // the arguments that the start command passes to it
	Quoted   []bool   // which of them stand in quotes: an empty one is there all the same
	Before   []string // files that the command has loaded before the program
	By       string   // the program that runs it, where nothing else is loaded into it
	Packaged bool     // a package manager runs the program, and sets variables of its own
	Released bool     // it runs as a release (Elixir)
	// Denied reports whether the runtime keeps a program from a thing: what it reads
	// then fails. The kinds are env and read; nil: nothing is kept.
	Denied func(kind, what string) bool
	// Properties are those that the command line of a virtual machine sets.
	Properties map[string]*Value
	// Launch is told of each command that the program starts while it is gone through, and
	// says whether what that starts goes on running. It may be nil.
	Launch func(Launch) (stays bool)
	// Settings is the module behind django.conf.settings, nil where there is
	// none.
	Settings *code.File

	methods bool       // an attribute is looked for in order to be called
	calling *code.Node // what is evaluated in order to be called

	depth  int
	steps  int
	active map[any]bool
	cut    int // how often something was cut short: by a circle, by a limit
	cache  map[spot]*Value

	callers map[*code.Node][]code.Site // the calls of a function
	maybe   map[*code.Node]bool        // functions that something may call that is not followed
	byName  map[string][]code.Site     // calls by the name of what is called
	byFile  map[string][]code.Site     // and by the file that it is imported from
	indexed int                        // how many of the loaded files are in these
	total   int                        // expressions evaluated so far

	calledAs map[string][]code.Site // calls by the name of what is called
	numbered int                    // how many of the loaded files are in these

	heirs     map[string][]heir // classes by the name of one that they come from
	descended int               // how many of the loaded files are in these
	ofGo      map[string][]method
	listed    int // how many of the loaded files are in ofGo
	looping   map[*code.File]*loops
	unnamed   map[*code.File]map[*code.Node]string // functions without a name of their own
	in        *context                             // the turn of a loop that is looked at

	changed map[*code.File]map[string][]code.Site // what changes objects, by their names

	outside   map[string][]*code.Binding // what functions of Go assign to variables of their package, by its folder and their name
	assigning int                        // how many of the loaded files are in these

	sets    map[string][]code.Site // what may set a variable, by its name
	scanned int                    // how many of the loaded files are in sets
}

// New makes an evaluator.
func New(l Loader, main string) *Eval {
	return &Eval{Loader: l, Main: main, active: map[any]bool{}, cache: map[spot]*Value{}, sets: map[string][]code.Site{},
		callers: map[*code.Node][]code.Site{}, maybe: map[*code.Node]bool{}, heirs: map[string][]heir{}, ofGo: map[string][]method{}, looping: map[*code.File]*loops{}, unnamed: map[*code.File]map[*code.Node]string{}, changed: map[*code.File]map[string][]code.Site{}, outside: map[string][]*code.Binding{}, calledAs: map[string][]code.Site{}, byName: map[string][]code.Site{}, byFile: map[string][]code.Site{}}
}

// ref is the code behind a function, class or object.
type ref struct {
	file  *code.File
	node  *code.Node
	scope *code.Scope // the scope in which it stands
	up    *context    // the call in which a function was made
	// several is set where the object may be of one of several classes that
	// come from this one.
	several bool
	this    *Value
	own     string            // the name of a constant of an enumeration
	done    []*code.Node      // methods of Go that have written into an object
	args    []*Value          // what an object was made with, by place
	keys    map[string]*Value // and by keyword
}

// context is what is known while the body of a function is evaluated.
type context struct {
	fn     *code.Node
	args   []*Value
	keys   map[string]*Value
	this   *Value
	up     *context
	loops  map[string]*Value // what the names of loops hold in this turn
	result int               // which of several results is asked, from 0
	use    int32             // where in the function the name is used, 0 for its end
}

const (
	maxEval  = 120     // how deep one expression leads to others
	maxExprs = 5_000   // how many expressions one leads to in all
	maxTotal = 400_000 // how many a program may take
)

// Expr says what an expression comes to in its scope.
func (e *Eval) Expr(n *code.Node, s *code.Scope) *Value { return e.expr(n, s, e.turnOf(s)) }

// Name says what a name at the top of a file comes to once the file has run.
func (e *Eval) Name(f *code.File, name string) *Value {
	if v := e.member(f, name, nil); v != nil {
		return v
	}
	return nil
}

// spot is an expression in a scope.
type spot struct {
	n *code.Node
	s *code.Scope
}

// busy reports whether something is being worked out already: whoever asks
// for it then goes in a circle, and what comes of that is not kept.
func (e *Eval) busy(key any) bool {
	if e.active[key] {
		e.cut++
		return true
	}
	return false
}

// expr evaluates an expression. Outside of calls its value is always the same
// and is kept, unless something on the way was cut short.
func (e *Eval) expr(n *code.Node, s *code.Scope, c *context) *Value {
	if n == nil {
		return &Value{Kind: Undef}
	}
	keep := false
	switch n.Kind {
	case code.Name, code.Call, code.New, code.Member, code.Index, code.Object, code.Cond, code.Binary:
		keep = c == nil
	}
	if keep {
		if v, ok := e.cache[spot{n, s}]; ok {
			return v
		}
	}
	if e.depth == 0 {
		e.steps = 0
	}
	e.total++
	if e.steps++; e.depth > maxEval || e.steps > maxExprs || e.total > maxTotal {
		e.cut++
		return unknown("nested too deep", place.Span{})
	}
	e.depth++
	before, loaded := e.cut, len(e.Loader.Loaded())
	v := e.evaluate(n, s, c)
	if n.Is(code.Call) || n.Is(code.Member) || n.Is(code.Index) {
		v = e.optional(n, v, s, c)
	}
	e.depth--
	if keep && e.cut == before && len(e.Loader.Loaded()) == loaded {
		e.cache[spot{n, s}] = v
	}
	return v
}

func (e *Eval) evaluate(n *code.Node, s *code.Scope, c *context) *Value {
	f := s.File
	py := f.Lang == code.Python
	at := func() place.Span { return f.At(n) }
	switch n.Kind {
	case code.String:
		return text(n.Name, at())
	case code.Number:
		if strings.HasSuffix(n.Name, "n") && javascript(f.Lang) {
			return unknown("an integer of any size", at())
		}
		return e.number(n, at())
	case code.True, code.False:
		return boolean(n.Kind == code.True, at())
	case code.Null:
		return &Value{Kind: Null, At: at()}
	case code.Undefined:
		return &Value{Kind: Undef, At: at()}
	case code.Template:
		parts := make([]*Value, len(n.Kids))
		for i, k := range n.Kids {
			if parts[i] = e.expr(k, s, c); f.Lang == code.PHP || f.Lang == code.CSharp {
				parts[i] = phpText(parts[i])
			}
			if f.Lang == code.Python && !code.Plain(f, k) {
				return unknown("a format", f.At(k))
			}
		}
		v := Concat(parts...)
		if v.Kind == Op {
			v.At, v.Py = at(), py
		}
		return v
	case code.Unknown:
		if src, ok := strings.CutPrefix(n.Name, code.Pattern); ok {
			return literalPattern(src, f.Lang, at())
		}
	case code.Name:
		return e.name(n, s, c)
	case code.Member:
		if v := e.putOn(n, s); v != nil {
			return v
		}
		if b := f.Exports["="]; b != nil && n.Name == "exports" && n.Dotted() == "module.exports" {
			if v := e.exported(f, b); v != nil {
				return v
			}
		}
		if f.Lang == code.Ruby {
			if v := e.rubySetting(n, s); v != nil {
				return v
			}
			if n.Kids[0].Is(code.Name) && n.Kids[0].Name == "settings" {
				if v := e.sinatraMode(n.Name, at()); v != nil {
					return v
				}
			}
			if v := e.rubyConversion(n, s, c); v != nil {
				return v
			}
			return e.rubyValue(n, e.property(n, e.expr(n.Kids[0], s, c), n.Name, s, c), c)
		}
		if f.Lang == code.Rust {
			if v := e.rustMember(n, s, c); v != nil {
				return v
			}
		}
		if f.Lang == code.CSharp {
			if v := e.dotnetMember(n, s, c); v != nil {
				return v
			}
		}
		return e.property(n, e.expr(n.Kids[0], s, c), n.Name, s, c)
	case code.Index:
		return e.index(n, s, c)
	case code.Call, code.New:
		return e.call(n, s, c)
	case code.Await:
		return e.expr(n.Kid(0), s, c)
	case code.Throw:
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at()}
	case code.Unary:
		return e.unary(n, s, c)
	case code.Binary:
		if v := e.mainTest(n, s); v != nil {
			return v
		}
		name := n.Name
		if name == code.Fits {
			return unknown("whether a case fits", at())
		}
		if name == "||" && (f.Lang == code.Ruby || f.Lang == code.Elixir) { // empty text is true there
			l, r := e.expr(n.Kid(0), s, c), e.expr(n.Kid(1), s, c)
			if l.Kind == Env || l.Kind == Op && l.Text == "??" {
				return op("??", true, at(), l, r)
			}
			return &Value{Kind: Cond, Py: true, At: at(), Kids: []*Value{op("rubytrue", true, at(), l), l, r}}
		}
		if name == "instanceof" {
			return unknown("the class of an object", at())
		}
		if name == "not in" {
			return op("!", py, at(), e.evaluate(&code.Node{Kind: code.Binary, Name: "in", Kids: n.Kids, Off: n.Off, End: n.End}, s, c))
		}
		l, r := e.expr(n.Kid(0), s, c), e.expr(n.Kid(1), s, c)
		if v := patternTest(name, l, r, f.Lang, at()); v != nil {
			return v
		}
		if name == "&&" && (f.Lang == code.Ruby || f.Lang == code.Elixir) {
			return &Value{Kind: Cond, Py: true, At: at(), Kids: []*Value{op("rubytrue", true, at(), l), r, l}}
		}
		if name == "rescue" {
			return op("catch", true, at(), l, r)
		}
		if f.Lang == code.Go && (name == "==" || name == "!=") && r.Kind == Null && n.Kid(0).Is(code.Name) && strings.Contains(strings.ToLower(n.Kids[0].Name), "err") {
			l = l.worked(0)
		}
		if f.Lang == code.Rust && (name == "==" || name == "!=") { // of results and options
			if some := func(k *code.Node) bool {
				return k.Is(code.Call) && (k.Kid(0).Dotted() == "Ok" || k.Kid(0).Dotted() == "Some") || k.Is(code.Name) && k.Name == "None"
			}; some(n.Kid(1)) || some(n.Kid(0)) {
				none := &Value{Kind: Null, At: at()}
				l, r = op("catch", true, at(), l, none), op("catch", true, at(), r, none)
			}
		}
		if u := union(name, l, r, f.Lang); u != nil {
			return u
		}
		if f.Lang == code.PHP && name == "+" && l.Kind != Object && l.Kind != List && r.Kind != Object && r.Kind != List { // of numbers alone
			l, r = op("Number", true, l.At, l), op("Number", true, r.At, r)
		}
		if name == ".+" { // PHP: nothing and false are empty text
			return Concat(phpText(l), phpText(r))
		}
		if name == "in" {
			if list := e.argumentList(r, at()); list != nil {
				r = list
			} else if r.Kind == Object && l.Kind == Str && !slices.Contains(r.Keys, "...") {
				return r.Get(l.Text).present(at())
			} else if r.Kind == Object && !py && !slices.Contains(r.Keys, "...") { // a name of the object
				r = entries("Object.keys", []*Value{r}, at())
			}
		}
		if name == "in" && r.Kind == EnvMap {
			l = l.folded()
		}
		if name == "in" && r.Kind == EnvMap && l.Kind == Str {
			return op("isset", py, at(), &Value{Kind: Env, Text: l.Text, At: at()})
		}
		if name == "%" && (py || f.Lang == code.Ruby) && l.Kind == Str {
			args := []*Value{r}
			if r.Kind == List {
				args = r.Kids
			}
			return percent(l.Text, args, at())
		}
		if name == "/" && l.Kind == External {
			return &Value{Kind: External, Text: l.Text + "/", At: at(), Kids: []*Value{l, r}}
		}
		return op(name, py, at(), l, r)
	case code.Cond:
		return &Value{Kind: Cond, Py: py, At: at(), Kids: []*Value{e.test(n.Kid(0), s, c), e.expr(n.Kid(1), s, c), e.expr(n.Kid(2), s, c)}}
	case code.Assign:
		return e.expr(n.Kid(1), s, c)
	case code.Object:
		v := &Value{Kind: Object, Text: n.Alias, At: at()}
		if n.Alias == "Self" && s.Class != nil {
			v.Text = s.Class.Name
		}
		for _, p := range n.Kids {
			if p.Is(code.Spread) {
				v.spread(e.expr(p.Kid(0), s, c), py)
				continue
			}
			if fn := p.Kid(0); fn.Is(code.Func) && strings.HasPrefix(p.Name, code.Setter) && javascript(f.Lang) {
				continue
			}
			if fn := p.Kid(0); fn.Is(code.Func) && fn.Flag&code.Getter != 0 {
				get := &Value{Kind: Func, Text: p.Name, At: f.At(fn), ref: &ref{file: f, node: fn, scope: s, this: v}}
				v.Keys, v.Kids = append(v.Keys, p.Name), append(v.Kids, e.invoke(get, nil, nil, c))
				continue
			}
			key := p.Name
			if p.Kid(1) != nil {
				key = e.expr(p.Kid(1), s, c).Under(Environ{}).String()
			}
			k := e.expr(p.Kid(0), s, c)
			v.Keys, v.Kids = append(v.Keys, key), append(v.Kids, k)
		}
		return v
	case code.Array:
		if n.Name == code.LastOf && len(n.Kids) > 0 {
			return e.expr(n.Kids[len(n.Kids)-1], s, c)
		}
		if f.Lang == code.Go && n.Alias != "" {
			if v := e.placed(n, s, c); v != nil {
				return v
			}
		}
		v := &Value{Kind: List, At: at()}
		for _, k := range n.Kids {
			if k.Is(code.Spread) {
				o := e.expr(k.Kid(0), s, c)
				if o.Kind == List && len(v.Kids)+len(o.Kids) > maxParts {
					return unknown(tooMany, at())
				}
				if o.Kind == List {
					v.Kids = append(v.Kids, o.Kids...)
					continue
				}
				return &Value{Kind: Op, Text: "loop", Kids: append(v.Kids, o), At: at()}
			}
			v.Kids = append(v.Kids, e.expr(k, s, c))
		}
		return v
	case code.Func:
		return &Value{Kind: Func, Text: n.Name, At: at(), ref: &ref{file: f, node: n, scope: s, up: c, this: thisOf(c)}}
	case code.Class:
		return &Value{Kind: Class, Text: n.Name, At: at(), ref: &ref{file: f, node: n, scope: s}}
	case code.Comp:
		if v := e.comprehension(n, s, c); v != nil {
			return v
		}
		v := &Value{Kind: Op, Text: "loop", At: at()}
		i := 2
		for _, part := range n.Name {
			if part == 'i' {
				i++
				continue
			}
			v.Kids = append(v.Kids, e.expr(n.Kids[i], s, c))
			i += 2
		}
		return v
	case code.Keyword:
		return e.expr(n.Kid(0), s, c)
	}
	return unknown("code that is not followed: "+f.Text(n), at())
}

// spread adds the properties of an object, of one or another object by a
// condition, or of something that is not known.
func (v *Value) spread(o *Value, py bool) {
	switch {
	case len(v.Keys)+len(o.Keys) > maxParts:
		v.Keys, v.Kids = append(v.Keys, "..."), append(v.Kids, unknown(tooMany, o.At))
	case o.Kind == Object && o.Text == filtered:
		for i, k := range o.Keys {
			v.choose(o.Kids[i], &Value{Kind: Object, At: o.At, Keys: []string{k}, Kids: []*Value{o.Kids[i]}}, &Value{Kind: Undef}, py)
		}
	case o.Kind == Object:
		for i, k := range o.Keys {
			w := o.Kids[i]
			if k != "..." && w.partly(0) {
				if before := v.Get(k); before != nil {
					w = w.filled(before, 0)
				}
			}
			v.Keys, v.Kids = append(v.Keys, k), append(v.Kids, w)
		}
	case o.Kind == Undef || o.Kind == Null || o.Kind == Bool:
	case o.Kind == Cond && objectOrNothing(o.Kids[1]) && objectOrNothing(o.Kids[2]):
		v.choose(o.Kids[0], o.Kids[1], o.Kids[2], o.Py)
	case o.Kind == Op && o.Text == "&&" && objectOrNothing(o.Kids[1]):
		v.choose(o.Kids[0], o.Kids[1], &Value{Kind: Undef}, o.Py)
	case o.Kind == Op && (o.Text == "||" || o.Text == "??") && o.Kids[1].Kind == Object && len(o.Kids[1].Keys) == 0:
		v.spread(o.Kids[0], py)
	default:
		w := o.settled(0)
		if w == nil && o.Kind == Cond && len(o.Kids) == 3 && o.choices(maxChoices) < maxChoices && o.objects(0) {
			yes, no := *v, *v
			for i, side := range []*Value{&yes, &no} {
				side.Keys, side.Kids = slices.Clone(v.Keys), slices.Clone(v.Kids)
				side.spread(o.Kids[i+1], py)
			}
			v.openly(o, &yes, &no)
			return
		}
		if w == nil || w.Kind != Cond {
			v.Keys, v.Kids = append(v.Keys, "..."), append(v.Kids, o)
			return
		}
		yes, no := *v, *v
		for i, side := range []*Value{&yes, &no} {
			side.Keys, side.Kids = slices.Clone(v.Keys), slices.Clone(v.Kids)
			side.spread(w.Kids[i+1], py)
		}
		if slices.Contains(yes.Keys, "...") || slices.Contains(no.Keys, "...") {
			v.Keys, v.Kids = append(v.Keys, "..."), append(v.Kids, o)
			return
		}
		yes.Keys, yes.Kids = yes.Keys[len(v.Keys):], yes.Kids[len(v.Kids):]
		no.Keys, no.Kids = no.Keys[len(v.Keys):], no.Kids[len(v.Kids):]
		v.choose(w.Kids[0], &yes, &no, w.Py)
	}
}

// objects reports whether one of the values that conditions choose between is an
// object.
func (v *Value) objects(depth int) bool {
	if v.Kind == Cond && len(v.Kids) == 3 && depth < 12 {
		return v.Kids[1].objects(depth+1) || v.Kids[2].objects(depth+1)
	}
	return v.Kind == Object
}

// openly makes an object one of two that the condition of o chooses, of which
// one may hold what is not known.
func (v *Value) openly(o, yes, no *Value) {
	var keys []string
	var kids []*Value
	for _, side := range []*Value{yes, no} {
		if i := slices.Index(side.Keys, "..."); i >= 0 && len(keys) == 0 { // first, so that each that follows counts more
			keys, kids = append(keys, "..."), append(kids, side.Kids[i])
		}
	}
	nothing := &Value{Kind: Undef, Text: absent}
	for _, side := range []*Value{yes, no} {
		for _, k := range side.Keys {
			if k == "..." || slices.Contains(keys, k) {
				continue
			}
			a, b := yes.held(k, nothing), no.held(k, nothing)
			if a != b {
				a = &Value{Kind: Cond, Py: o.Py, At: a.At, Kids: []*Value{o.Kids[0], a, b}}
			}
			keys, kids = append(keys, k), append(kids, a)
		}
	}
	v.Keys, v.Kids = keys, kids
}

// settled gives what may be one of several objects, or nothing, as conditions
// between these; nil where it is anything else.
func (v *Value) settled(depth int) *Value {
	switch {
	case depth > 12:
		return nil
	case objectOrNothing(v):
		return v
	case v.Kind == Cond && len(v.Kids) == 3:
		a, b := v.Kids[1].settled(depth+1), v.Kids[2].settled(depth+1)
		if a == nil || b == nil {
			return nil
		}
		w := *v
		w.Kids = []*Value{v.Kids[0], a, b}
		return &w
	case v.Kind == Op && (v.Text == "||" || v.Text == "??") && len(v.Kids) == 2:
		a, b := v.Kids[0].settled(depth+1), v.Kids[1].settled(depth+1)
		if a == nil || b == nil {
			return nil
		}
		return a.orElse(b)
	}
	return nil
}

// orElse puts another value in the place of nothing.
func (v *Value) orElse(b *Value) *Value {
	switch v.Kind {
	case Object:
		return v
	case Cond:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].orElse(b), v.Kids[2].orElse(b)}
		return &w
	}
	return b
}

func objectOrNothing(v *Value) bool {
	return v.Kind == Object || v.Kind == Undef || v.Kind == Null || v.Kind == Bool
}

// absent is the text of what stands for a property that an object does not have.
const absent = "absent"

// partly reports whether a property may be absent.
func (v *Value) partly(depth int) bool {
	switch {
	case v.Kind == Undef:
		return v.Text == absent
	case v.Kind == Cond && depth < 8:
		return v.Kids[1].partly(depth+1) || v.Kids[2].partly(depth+1)
	}
	return false
}

// filled puts another value where a property is absent.
func (v *Value) filled(by *Value, depth int) *Value {
	switch {
	case v.Kind == Undef && v.Text == absent:
		return by
	case v.Kind == Cond && depth < 8:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].filled(by, depth+1), v.Kids[2].filled(by, depth+1)}
		return &w
	}
	return v
}

// or is a property, or another value where it is absent.
func (v *Value) or(other *Value) *Value {
	if v == nil {
		return other
	}
	if v.partly(0) {
		return v.filled(other, 0)
	}
	return v
}

// held is a property of an object, or another value where it has none.
func (v *Value) held(key string, other *Value) *Value {
	w := v.Get(key)
	if i := slices.Index(v.Keys, "..."); w == nil && i >= 0 {
		if from := v.Kids[i]; from.Kind == Unknown {
			return from
		}
		return unknown("a property that may come from "+v.Kids[i].String(), v.At)
	}
	return w.or(other)
}

// present says whether a property is there.
func (v *Value) present(at place.Span) *Value {
	switch {
	case v == nil || v.Kind == Undef && v.Text == absent:
		return boolean(false, at)
	case v.Kind == Cond && v.partly(0):
		return &Value{Kind: Cond, Py: v.Py, At: at, Kids: []*Value{v.Kids[0], v.Kids[1].present(at), v.Kids[2].present(at)}}
	}
	return boolean(true, at)
}

// choose adds the properties that one of two objects has, each under the
// condition.
func (v *Value) choose(test, yes, no *Value, py bool) {
	seen := map[string]bool{}
	for _, k := range append(append([]string(nil), yes.Keys...), no.Keys...) {
		if seen[k] {
			continue
		}
		seen[k] = true
		before := v.Get(k)
		if before == nil {
			before = &Value{Kind: Undef, Text: absent}
		}
		a, b := yes.Get(k), no.Get(k)
		if a == nil {
			a = before
		}
		if b == nil {
			b = before
		}
		v.Keys, v.Kids = append(v.Keys, k), append(v.Kids, &Value{Kind: Cond, Py: py, At: a.At, Kids: []*Value{test, a, b}})
	}
}

// anError stands for an error that is there.
const anError = "an error"

// Failed says that the value is an error that is there.
func (v *Value) Failed() bool { return v.Kind == External && v.Text == anError }

// worked is an error of which nothing is known as nothing: that it works is
// what is asked.
func (v *Value) worked(depth int) *Value {
	switch {
	case v.Kind == External && !v.Failed() || v.Kind == Unknown:
		return &Value{Kind: Null, At: v.At}
	case v.Kind == Cond && len(v.Kids) == 3 && depth < 12:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].worked(depth + 1), v.Kids[2].worked(depth + 1)}
		return &w
	}
	return v
}

func thisOf(c *context) *Value {
	if c == nil {
		return nil
	}
	return c.this
}

func (e *Eval) number(n *code.Node, at place.Span) *Value {
	s := strings.TrimSuffix(strings.ReplaceAll(n.Name, "_", ""), "n")
	if i, err := strconv.ParseInt(s, 0, 64); err == nil {
		return number(float64(i), at)
	}
	if f, err := strconv.ParseFloat(s, 64); err == nil {
		return number(f, at)
	}
	return unknown("a number that is not understood", at)
}

// mainTest answers `require.main === module`, `__name__ == "__main__"` and
// their like.
func (e *Eval) mainTest(n *code.Node, s *code.Scope) *Value {
	if n.Name != "===" && n.Name != "==" && n.Name != "!==" && n.Name != "!=" {
		return nil
	}
	l, r := n.Kid(0), n.Kid(1)
	mains := 0
	for _, k := range []*code.Node{l, r} {
		k.Walk(func(x *code.Node) bool {
			switch x.Dotted() {
			case "require.main", "import.meta.url", "import.meta.filename":
				mains |= 1
			case "$0", "$PROGRAM_NAME":
				mains |= 1
			case "module", "process.argv", "__filename", "__FILE__":
				mains |= 2
			}
			return true
		})
	}
	if mains != 3 {
		return nil
	}
	is := s.File.Name == e.Main
	if strings.HasPrefix(n.Name, "!") {
		is = !is
	}
	return boolean(is, s.File.At(n))
}

func (e *Eval) unary(n *code.Node, s *code.Scope, c *context) *Value {
	py := s.File.Lang == code.Python
	at := s.File.At(n)
	v := e.expr(n.Kid(0), s, c)
	switch n.Name {
	case "!":
		if s.File.Lang == code.Ruby {
			v = op("rubytrue", true, at, v)
		}
		return op("!", py, at, v)
	case "+":
		return op("Number", py, at, v)
	case "-":
		return op("neg", py, at, v)
	case "typeof":
		return op("typeof", py, at, v)
	case "holds":
		return op("holds", true, at, v)
	case "~":
		return op("^", py, at, v, &Value{Kind: Num, Num: -1, At: at})
	case "void":
		return &Value{Kind: Undef, At: at}
	}
	return unknown("what "+n.Name+" gives", at)
}

// globals are names that a language has without an import.
var globals = map[string]bool{"process": true, "Bun": true, "Deno": true, "globalThis": true, "global": true, "require": true, "module": true,
	"console": true, "Number": true, "parseInt": true, "parseFloat": true, "String": true, "Boolean": true, "isNaN": true, "JSON": true, "Object": true, "Math": true,
	"URL": true, "Map": true, "Set": true, "int": true, "str": true, "float": true, "bool": true, "len": true, "list": true, "getattr": true, "isinstance": true, "tuple": true, "set": true, "bytes": true, "dict": true, "open": true, "max": true, "min": true, "Array": true, "next": true, "vars": true, "__file__": true, "__dirname": true, "__filename": true, "__DIR__": true, "__FILE__": true, "__dir__": true, "import": true}

// verticle reports whether code stands in a verticle of Vert.x.
func verticle(s *code.Scope) bool {
	for x := s; x != nil; x = x.Parent {
		if x.Class == nil {
			continue
		}
		for _, b := range x.Class.Kid(0).Kids {
			if d := b.Dotted(); strings.HasSuffix(d, "Verticle") || strings.HasSuffix(d, "VerticleBase") {
				return true
			}
		}
	}
	return false
}

func (e *Eval) name(n *code.Node, s *code.Scope, c *context) *Value {
	for x := c; x != nil; x = x.up {
		if v := x.loops[n.Name]; v != nil && reaches(s, x.fn, n.Name) {
			return v
		}
	}
	f := s.File
	if f.Lang == code.Python && n.Name == "__name__" {
		if f.Name == e.Main {
			return text("__main__", f.At(n))
		}
		return text("(imported)", f.At(n))
	}
	if n.Name == "self" && f.Lang == code.Rust {
		for x := c; x != nil; x = x.up {
			if ps := x.fn.Kid(0); ps != nil && len(ps.Kids) > 0 && ps.Kids[0].Name == "self" && len(x.args) > 0 {
				return x.args[0]
			}
		}
	}
	if n.Name == "this" || n.Name == "self" && f.Lang != code.PHP || n.Name == "cls" || n.Name == "$this" {
		if t := e.this(s, c); t != nil {
			return t
		}
	}
	if v := e.lookup(n.Name, n.Off, s, c); v != nil {
		if f.Lang == code.Ruby {
			return e.rubyValue(n, v, c)
		}
		return v
	}
	if f.Lang == code.Ruby {
		if v := e.rubyName(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.Rust {
		for _, g := range e.rustFiles(f)[1:] {
			if v := e.topOf(g, n.Name); v != nil && e.rustUses(f, n.Name) {
				return v
			}
		}
		if n.Name == "None" {
			return &Value{Kind: Null, At: f.At(n)}
		}
	}
	if f.Lang == code.PHP {
		if v := e.phpName(n, s, c); v != nil {
			return v
		}
	}
	if f.Lang == code.CSharp {
		if n.Name == "args" {
			return &Value{Kind: External, Text: "main.args", At: f.At(n)}
		}
		for _, g := range e.Loader.Loaded() {
			if cls := g.Classes[n.Name]; cls != nil && g.Lang == code.CSharp {
				return &Value{Kind: Class, Text: n.Name, At: g.At(cls), ref: &ref{file: g, node: cls, scope: g.Top}}
			}
		}
		if c := n.Name[0]; c >= 'A' && c <= 'Z' {
			return &Value{Kind: External, Text: n.Name, At: f.At(n)}
		}
	}
	if n.Name == "NaN" && f.Lang != code.Python {
		return number(math.NaN(), f.At(n))
	}
	if jvm(f.Lang) {
		if n.Name == "it" { // the parameter of a lambda that has no name
			for x := c; x != nil; x = x.up {
				if v := x.keys["it"]; v != nil {
					return v
				}
			}
		}
		if c := n.Name[0]; c >= 'A' && c <= 'Z' || f.Lang == code.Kotlin {
			return e.className(f, n.Name, f.At(n))
		}
		if n.Name == "vertx" && verticle(s) { // the field that every verticle has
			return &Value{Kind: External, Text: "io.vertx.core.Vertx.vertx()", At: f.At(n)}
		}
		switch n.Name {
		case "java", "javax", "com", "org", "io": // the whole name of a class
			return &Value{Kind: External, Text: n.Name, At: f.At(n)}
		}
		for _, i := range f.Imports { // a static import
			if strings.HasSuffix(i.Node.Name, "."+n.Name) {
				return &Value{Kind: External, Text: simple(i.Node.Name), At: f.At(n)}
			}
		}
	}
	if globals[n.Name] {
		return &Value{Kind: External, Text: n.Name, At: f.At(n)}
	}
	if v := e.globalOf(n.Name, f.Lang); v != nil {
		return v
	}
	if p := Starred(e.Loader, f, n.Name); p != "" {
		return &Value{Kind: External, Text: p, At: f.At(n)}
	}
	return unknown(n.Name+" is not defined in what was read", f.At(n))
}

// globalOf is a name that some file puts on the global object of JavaScript.
func (e *Eval) globalOf(name string, l code.Language) *Value {
	if !javascript(l) {
		return nil
	}
	for _, f := range e.Loader.Loaded() {
		for _, site := range f.Sets {
			x := site.Node
			if x.Is(code.Member) && x.Name == name && x.Kid(0).Is(code.Name) && (x.Kids[0].Name == "global" || x.Kids[0].Name == "globalThis") && len(site.Guards) == 0 && !e.busy(x) {
				e.active[x] = true
				v := e.Expr(site.Value, site.Scope)
				delete(e.active, x)
				return v.with(Step{f.At(x), f.Text(x)})
			}
		}
	}
	return nil
}

// this gives the object that a method belongs to.
func (e *Eval) this(s *code.Scope, c *context) *Value {
	v := e.object(s, c)
	if v != nil && v.Kind == Instance && v.ref != nil && (s.File.Lang == code.Ruby || javascript(s.File.Lang)) && ofClass(s) {
		class := *v
		class.Kind = Class
		return &class
	}
	return v
}

// ofClass reports whether a scope is in a method of a class itself.
func ofClass(s *code.Scope) bool {
	for x := s; x != nil && x.Func != nil; x = x.Parent {
		if x.Func.Flag&code.Static != 0 {
			return true
		}
	}
	return false
}

func (e *Eval) object(s *code.Scope, c *context) *Value {
	for x := c; x != nil; x = x.up {
		if x.this != nil {
			return x.this
		}
	}
	for x := s; x != nil; x = x.Parent {
		if x.Class != nil {
			return e.derived(&Value{Kind: Instance, Text: x.Class.Name, ref: &ref{file: s.File, node: x.Class, scope: s.File.Top}}, 0)
		}
	}
	return nil
}

// heir is a class of the tree with one of the classes that it comes from.
type heir struct {
	file        *code.File
	class, base *code.Node
}

// heirsOf lists the classes that come from a class. Each file is gone through
// once.
func (e *Eval) heirsOf(class *code.Node) []heir {
	files := e.Loader.Loaded()
	for ; e.descended < len(files); e.descended++ {
		f := files[e.descended]
		for _, name := range slices.Sorted(maps.Keys(f.Classes)) {
			for _, b := range f.Classes[name].Kid(0).Kids {
				if b.Is(code.Name) || b.Is(code.Member) {
					of := Tail(b.Name[strings.LastIndexByte(b.Name, '\\')+1:], 1)
					e.heirs[of] = append(e.heirs[of], heir{f, f.Classes[name], b})
				}
			}
		}
	}
	var list []heir
	for _, h := range e.heirs[class.Name] {
		if class.Name == "" || h.class == class || e.busy(h.base) {
			continue
		}
		e.active[h.base] = true
		v := e.expr(h.base, h.file.Top, nil)
		delete(e.active, h.base)
		if v.Kind == Class && v.ref != nil && v.ref.node == class {
			list = append(list, h)
		}
	}
	return list
}

// derived is an object of the one class of the tree that comes from the class of
// v. Where there are several, or where the class itself is used too, it is v,
// which may then be of any of them.
func (e *Eval) derived(v *Value, depth int) *Value {
	class := v.ref.node
	list := e.heirsOf(class)
	if len(list) == 0 || depth > 4 {
		return v
	}
	several := len(list) > 1
	for _, site := range e.sites(class.Name, v.ref.file.Name) {
		several = several || !supers(site.Node)
	}
	if v.ref.file.Lang == code.Ruby {
		for _, site := range e.sites("new", v.ref.file.Name) {
			of := site.Node.Kid(0).Kid(0)
			several = several || (of.Is(code.Name) || of.Is(code.Member)) && of.Name == class.Name
		}
	}
	if several {
		w := *v
		r := *v.ref
		r.several = true
		w.ref = &r
		return &w
	}
	only := &Value{Kind: Instance, Text: list[0].class.Name, At: v.At, ref: &ref{file: list[0].file, node: list[0].class, scope: list[0].file.Top}}
	return e.derived(only, depth+1)
}

// isOf reports whether an object is of a class, or of one that comes from it.
func (e *Eval) isOf(v *Value, class *code.Node, depth int) bool {
	if v.ref.node == class {
		return true
	}
	for _, b := range v.ref.node.Kid(0).Kids {
		if depth > 4 || !b.Is(code.Name) && !b.Is(code.Member) {
			continue
		}
		if bv := e.expr(b, v.ref.scope, nil); bv.Kind == Class && bv.ref != nil && e.isOf(bv, class, depth+1) {
			return true
		}
	}
	return false
}

// overridden reports whether some class that comes from a class has an
// attribute of its own of that name.
func (e *Eval) overridden(class *code.Node, name string, depth int) bool {
	for _, h := range e.heirsOf(class) {
		if in := h.file.Inside[h.class]; in != nil && len(in.Names[name]) > 0 || depth < 5 && e.overridden(h.class, name, depth+1) {
			return true
		}
	}
	return false
}

// lookup follows a name through the scopes around it.
func (e *Eval) lookup(name string, off int32, s *code.Scope, c *context) *Value {
	file := s.File
	for x := s; x != nil; x = x.Parent {
		bs := x.Names[name]
		if x.Class != nil && x.Func == nil && name == x.Class.Name && members(file.Lang) {
			continue // its constructor has the name of the class
		}
		if len(bs) == 0 {
			if x.Class == nil || x.Func != nil || !members(file.Lang) || !primary(x.Class, name) {
				continue
			}
			this := e.this(s, c)
			if this == nil || this.ref == nil || !e.isOf(this, x.Class, 0) {
				this = &Value{Kind: Instance, Text: x.Class.Name, ref: &ref{file: file, node: x.Class, scope: file.Top}}
			}
			if v := e.attribute(this, name, c); v != nil {
				return v
			}
			continue
		}
		use := off
		if x != s {
			use = 0 // a function runs after what surrounds it was set up
		}
		if x.Class != nil && x.Func == nil && members(file.Lang) {
			if this := e.this(s, c); this != nil && this.ref != nil && e.isOf(this, x.Class, 0) {
				if v := e.attribute(this, name, c); v != nil {
					return v
				}
			}
		}
		if x != s {
			bs = before(bs, s, off)
			if x == file.Top && file.Lang == code.Go {
				bs = e.elsewhere(bs, name, file)
			}
		}
		if v := e.bindings(bs, x, contextOf(c, x), use); v != nil {
			switch {
			case v.Kind == Object:
				return e.changedBy(x, name, v, s, use, c)
			case x == file.Top && file.Lang == code.Python:
				v = e.grown(file, name, v, use)
			case v.Kind == List && pushing[file.Lang] != "":
				v = e.pushed(x, name, v, s, use, c)
			}
			return e.changedOneOf(x, name, v, s, use, c)
		}
	}
	if file.Lang == code.Go {
		if v := e.samePackage(name, file); v != nil {
			return v
		}
	}
	if members(file.Lang) { // of a class that this one comes from
		for x := s; x != nil; x = x.Parent {
			if x.Class == nil || x.Func != nil || len(x.Class.Kid(0).Kids) == 0 {
				continue
			}
			this := e.this(s, c)
			if this == nil || this.ref == nil || !e.isOf(this, x.Class, 0) {
				this = &Value{Kind: Instance, Text: x.Class.Name, ref: &ref{file: file, node: x.Class, scope: file.Top}}
			}
			if v := e.attribute(this, name, c); v != nil && v.Kind != External {
				return v
			}
		}
	}
	return e.starred(file, name)
}

// before leaves out what the function that asks writes only later.
func before(bs []*code.Binding, s *code.Scope, off int32) []*code.Binding {
	for i, b := range bs {
		if b.From == nil || s.Func == nil || b.From.Func != s.Func || b.Off < off {
			continue
		}
		kept := slices.Clone(bs[:i])
		for _, b := range bs[i:] {
			if b.From == nil || b.From.Func != s.Func || b.Off < off {
				kept = append(kept, b)
			}
		}
		return kept
	}
	return bs
}

// primary reports whether a class takes a field by its name where it is
// declared: record X(int port), class X(val port: Int).
func primary(class *code.Node, name string) bool {
	for _, m := range class.Kid(1).Kids {
		if m.Is(code.Func) && m.Name == "constructor" {
			for _, p := range m.Kid(0).Kids {
				if p.Name == name && p.Flag&code.Exported != 0 {
					return true
				}
			}
		}
	}
	return false
}

// contextOf finds the call in which the variables of a scope live.
func contextOf(c *context, s *code.Scope) *context {
	for x := c; x != nil; x = x.up {
		if x.fn == s.Func && s.Func != nil {
			return x
		}
	}
	if s.Func == nil {
		for x := c; x != nil; x = x.up {
			if x.fn == nil && x.loops != nil { // a loop at the top of a file
				return x
			}
		}
		return nil
	}
	return c
}

// union joins two maps: with + in PHP, where the first counts, with | in Python,
// where the second does; nil for all others.
func union(sign string, a, b *Value, l code.Language) *Value {
	if l == code.PHP && a.Kind == List && len(a.Kids) == 0 {
		a = &Value{Kind: Object, At: a.At}
	}
	if a.Kind != Object || b.Kind != Object {
		return nil
	}
	switch {
	case l == code.PHP && sign == "+":
		a, b = b, a
	case l == code.Python && sign == "|", l == code.Kotlin && sign == "+":
	default:
		return nil
	}
	o := *a
	o.Keys, o.Kids = slices.Clone(a.Keys), slices.Clone(a.Kids)
	o.spread(b, true)
	return &o
}

// starred looks for a name in what a file takes with `from x import *`.
func (e *Eval) starred(f *code.File, name string) *Value {
	for i := len(f.Stars) - 1; i >= 0; i-- {
		path, ok := e.Loader.Resolve(f, f.Stars[i].Name, "")
		if !ok || e.busy(path+"*"+name) {
			continue
		}
		g := e.Loader.File(path)
		if g == nil {
			continue
		}
		e.active[path+"*"+name] = true
		v := e.member(g, name, nil)
		delete(e.active, path+"*"+name)
		if v != nil {
			return v.with(Step{f.At(f.Stars[i]), "takes " + name + " from " + path})
		}
	}
	return nil
}

// bindings folds the ways in which a name gets its value, in the order of the
// source, into one value.
func (e *Eval) bindings(bs []*code.Binding, s *code.Scope, c *context, use int32) *Value {
	var v *Value
	var shared []code.Guard
	for _, b := range bs {
		if use > 0 && b.Off > use && b.Kind != "func" && b.Kind != "class" && b.Kind != "import" {
			continue
		}
		if e.busy(b) {
			if v == nil && s == s.File.Top && s.File.Lang == code.Python {
				v = e.starred(s.File, b.Name)
			}
			if v == nil {
				v = unknown(b.Name+" is made from itself", place.Span{})
			}
			continue
		}
		e.active[b] = true
		next := e.binding(b, s, c)
		delete(e.active, b)
		if next == nil {
			continue
		}
		if b.Op != "" && b.Op != "=" && b.Op != ":=" && v != nil {
			name := strings.TrimSuffix(b.Op, "=")
			if u := union(name, v, next, s.File.Lang); u != nil {
				next = u
			} else {
				next = op(name, s.File.Lang == code.Python, next.At, v, next)
			}
		}
		if v == nil {
			v, shared = next, b.Guards
			continue
		}
		if b.Try != nil && !handled(bs, b.Try) { // after an error it is as it was
			next = op("catch", s.File.Lang == code.Python, next.At, next, v)
		}
		for i := len(b.Guards) - 1; i >= 0; i-- {
			g := b.Guards[i]
			if i < len(shared) && shared[i].Test == g.Test && shared[i].Not == g.Not {
				break // both stand under the same condition
			}
			next = e.guarded(g, next, v, c)
		}
		v = next
	}
	return v
}

// test is the value of a condition: in Ruby everything but nil and false holds,
// the empty text and 0 too.
func (e *Eval) test(n *code.Node, s *code.Scope, c *context) *Value {
	v := e.expr(n, s, c)
	if s.File.Lang == code.Ruby || s.File.Lang == code.Elixir {
		return op("rubytrue", true, v.At, v)
	}
	return v
}

// handled reports whether a handler of a try sets the name too.
func handled(bs []*code.Binding, try *code.Node) bool {
	for _, b := range bs {
		for _, g := range b.Guards {
			if g.Test == try {
				return true
			}
		}
	}
	return false
}

func (e *Eval) guarded(g code.Guard, yes, no *Value, c *context) *Value {
	if g.Test.Is(code.Try) {
		return op("catch", true, yes.At, no, yes)
	}
	py := g.Scope.File.Lang == code.Python
	t := e.test(g.Test, g.Scope, c)
	if g.Not {
		yes, no = no, yes
	}
	return &Value{Kind: Cond, Py: py, At: yes.At, Kids: []*Value{t, yes, no}}
}

// forks say whether a process is the first of its program, or one that this one
// has made (Node.js documentation, "Cluster" and "Worker threads").
var forks = map[string]bool{"cluster.isPrimary": true, "cluster.isMaster": true, "cluster.isWorker": false, "worker_threads.isMainThread": true}

// Guard gives the condition of a guard as a value that is true when the
// guarded code runs.
func (e *Eval) Guard(g code.Guard) *Value { return e.guardIn(g, nil) }

func (e *Eval) guardIn(g code.Guard, c *context) *Value {
	if g.Test.Is(code.Try) {
		return unknown("only after an error", place.Span{})
	}
	py := g.Scope.File.Lang == code.Python
	t := e.test(g.Test, g.Scope, c)
	if g.Not {
		return op("!", py, t.At, t)
	}
	return op("Boolean", py, t.At, t)
}

func (e *Eval) binding(b *code.Binding, s *code.Scope, c *context) *Value {
	f := s.File
	if b.From != nil {
		f = b.From.File
	}
	line := func(end int32) place.Span { return f.Lines.Span(f.Name, int(b.Off), int(max(b.Off, end))) }
	if b.Kind == "loop" || b.Op == "loop" && b.Value == nil || b.Turn {
		return unknown("set in a loop", line(b.Off))
	}
	switch b.Kind {
	case "func":
		return &Value{Kind: Func, Text: b.Name, At: line(b.Off + int32(len(b.Name))), ref: &ref{file: f, node: b.Value, scope: s, this: thisOf(c)}}
	case "class":
		return &Value{Kind: Class, Text: b.Name, At: line(b.Off + int32(len(b.Name))), ref: &ref{file: f, node: b.Value, scope: s}}
	case "import":
		return e.imported(f, b.Import, b.Name2)
	case "param":
		return e.param(b, s, c)
	case "alias":
		return e.expr(b.Value, s, c)
	}
	if b.Filled {
		return unknown("a field that a library fills", line(b.Off))
	}
	if b.Value == nil {
		if b.Kind != "" {
			return &Value{Kind: Undef, At: line(b.Off)}
		}
		return nil
	}
	if b.From != nil {
		s = b.From
		if c == nil || c.fn != s.Func {
			c = contextOf(c, s)
		}
	}
	v := e.expr(b.Value, s, c)
	for _, k := range b.Path {
		v = e.key(v, k, s, c, f.At(b.Value))
	}
	if b.Default != nil {
		v = &Value{Kind: Op, Text: "default", Kids: []*Value{v, e.expr(b.Default, s, c)}, At: f.At(b.Default)}
		v.Text = "??"
	}
	from, end := min(b.Off, b.Value.Off), b.Value.End // in `with x as y` the value stands first
	return v.with(Step{f.Lines.Span(f.Name, int(from), int(end)), f.Between(from, end, 72)})
}

// param gives what a parameter gets: from the call at hand, or from the only
// calls there are.
func (e *Eval) param(b *code.Binding, s *code.Scope, c *context) *Value {
	if s.File.Lang == code.Ruby && b.Func.Name == "" {
		if v := e.rubyOption(b, s); v != nil {
			return v
		}
	}
	if b.Index == 0 && (b.Func.Name == "main" && jvm(s.File.Lang) || b.Func.Name == "Main" && s.File.Lang == code.CSharp) && (c == nil || c.fn != b.Func) {
		return &Value{Kind: External, Text: "main.args", At: s.File.At(b.Func)}
	}
	if v := e.commandOption(b, s); v != nil {
		return v
	}
	if v := e.commandAction(b, s); v != nil {
		for _, k := range b.Path {
			v = e.key(v, k, s, c, v.At)
		}
		if b.Default != nil && len(b.Path) > 0 {
			v = op("??", false, v.At, v, e.expr(b.Default, s, c))
		}
		return v
	}
	def := func() *Value {
		if b.Value != nil {
			return e.expr(b.Value, s, nil)
		}
		return nil
	}
	recv := s.File.Lang == code.Go && b.Func.Kid(0).Kid(b.Index).Is(code.Param) && b.Func.Kid(0).Kid(b.Index).Flag&code.Star != 0
	if recv && c != nil && c.fn == b.Func && c.this != nil {
		return c.this
	}
	pick := func(v *Value) *Value {
		for _, k := range b.Path {
			v = e.key(v, k, s, c, v.At)
		}
		if b.Default != nil && len(b.Path) > 0 && !v.given() {
			if v.Kind == Undef {
				return e.expr(b.Default, s, c)
			}
			v = op("??", false, v.At, v, e.expr(b.Default, s, c))
		}
		return v
	}
	// rest are the arguments that a parameter takes all of: *names, ...names.
	rest := b.Func.Kid(0).Kid(b.Index)
	if rest == nil || rest.Flag&code.Rest == 0 || rest.Name != b.Name || len(b.Path) > 0 {
		rest = nil
	}
	if c != nil && c.fn == b.Func && !recv {
		i := b.Index
		if s.File.Lang == code.Python && b.Func.Flag&code.Method != 0 && c.this != nil {
			i--
		}
		if rest != nil && i >= 0 && c.keys["**"] == nil {
			return restOf(b, c.args[min(i, len(c.args)):], c.keys, s.File)
		}
		if v, ok := c.keys[strings.TrimPrefix(b.Name, "$")]; ok {
			if v.partly(0) {
				if d := def(); d != nil {
					v = v.filled(d, 0)
				}
			}
			return v
		}
		if v := c.keys["**"]; v != nil && i >= len(c.args) {
			return unknown("arguments that are made while the program runs", v.At)
		}
		if i >= 0 && i < len(c.args) {
			v := c.args[i]
			if d := def(); d != nil && s.File.Lang != code.Python && !v.given() {
				v = op("??", false, v.At, v, d)
			}
			return pick(v)
		}
		if v := loose(b, c.keys); v != nil && i >= len(c.args) && s.File.Lang == code.Ruby {
			return v
		}
		if d := def(); d != nil {
			return pick(d)
		}
		if i == -1 {
			return c.this
		}
		return &Value{Kind: Undef}
	}
	// Not evaluated from a call: look at the calls of this function.
	var only *Value
	for _, site := range e.callsOf(b.Func, s.File) {
		var v *Value
		if recv {
			v = e.expr(site.Node.Kid(0).Kid(0), site.Scope, nil)
		} else {
			in := &context{fn: b.Func}
			in.args, in.keys = e.oneArgument(b, rest != nil, site)
			if s.File.Lang == code.Python && b.Func.Flag&code.Method != 0 && !decorated(b.Func, "staticmethod") {
				in.this = e.this(s, nil)
			}
			v = e.param(b, s, in)
		}
		v = v.with(Step{site.Scope.File.At(site.Node), "called here"})
		if only != nil {
			return unknown("the parameter "+b.Name+" of a function that is called in several ways", s.File.At(b.Func))
		}
		only = v
	}
	if only != nil {
		return only
	}
	if d := def(); d != nil && !e.maybe[b.Func] {
		return pick(d)
	}
	if v := e.awaited(b, s); v != nil {
		return pick(v)
	}
	return unknown("the parameter "+b.Name, place.Span{})
}

// awaited gives what a function gets that a promise is told to call: what the promise is
// for, as await has it; nil where it is no such function.
func (e *Eval) awaited(b *code.Binding, s *code.Scope) *Value {
	if !javascript(s.File.Lang) || b.Index != 0 {
		return nil
	}
	for _, site := range s.File.Calls {
		args, callee := site.Node.Args(), site.Node.Kid(0)
		if len(args) == 0 || args[0] != b.Func || callee == nil || callee.Name != "then" || callee.Kid(0) == nil {
			continue
		}
		if v := e.expr(callee.Kids[0], site.Scope, nil); v != nil && v.Kind == External {
			return v.with(Step{s.File.At(site.Node), "called here"})
		}
		return nil
	}
	return nil
}

// oneArgument evaluates the arguments of a call as far as one parameter needs
// them: all where some are given by name or spread.
func (e *Eval) oneArgument(b *code.Binding, rest bool, site code.Site) ([]*Value, map[string]*Value) {
	turn := e.turnOf(site.Scope)
	list := site.Node.Args()
	if rest || slices.ContainsFunc(list, func(a *code.Node) bool { return a.Is(code.Keyword) || a.Is(code.Spread) }) {
		return e.args(site.Node, site.Scope, turn)
	}
	args := make([]*Value, len(list))
	for _, i := range []int{b.Index - 1, b.Index} { // a method of Python counts its object
		if i >= 0 && i < len(list) {
			args[i] = e.expr(list[i], site.Scope, turn)
		}
	}
	return args, map[string]*Value{}
}

// loose is the hash that keywords without a parameter of their name make as the
// last argument of a method of Ruby; nil where there are none.
func loose(b *code.Binding, keys map[string]*Value) *Value {
	params := b.Func.Kid(0)
	if b.Index != len(params.Kids)-1 {
		return nil
	}
	o := &Value{Kind: Object}
	for _, k := range slices.Sorted(maps.Keys(keys)) {
		if slices.ContainsFunc(params.Kids, func(p *code.Node) bool { return p.Name == k }) {
			continue
		}
		o.Keys, o.Kids, o.At = append(o.Keys, k), append(o.Kids, keys[k]), keys[k].At
	}
	if len(o.Keys) == 0 {
		return nil
	}
	return o
}

// restOf is the list of the arguments that are left, or the object of the
// keywords that are left: **options.
func restOf(b *code.Binding, left []*Value, keys map[string]*Value, f *code.File) *Value {
	params := b.Func.Kid(0)
	p := params.Kid(b.Index)
	if int(p.Off)+1 < len(f.Src) && f.Src[p.Off] == '*' && f.Src[p.Off+1] == '*' {
		o := &Value{Kind: Object, At: f.At(p)}
		for _, k := range slices.Sorted(maps.Keys(keys)) {
			if !slices.ContainsFunc(params.Kids, func(p *code.Node) bool { return p.Name == k }) {
				o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, keys[k])
			}
		}
		return o
	}
	if len(left) == 1 && left[0].Kind == Op && left[0].Text == spreadList {
		return left[0].Kids[0]
	}
	return &Value{Kind: List, At: f.At(p), Kids: slices.Clone(left)}
}

// spreadList is the operation that stands for arguments that a list gives whose
// length a condition decides.
const spreadList = "spread"

// given reports whether a value is there under every environment: then no
// default stands in for it.
func (v *Value) given() bool {
	switch v.Kind {
	case Object, List, Instance, Str, Num, Func, Class:
		return true
	case External: // a function of the language
		return conversions[v.Text] != ""
	}
	return false
}

// callsOf finds the calls of a function in the files read so far.
func (e *Eval) callsOf(fn *code.Node, f *code.File) []code.Site {
	name := fn.Name
	if name == "" {
		name = e.nameOf(fn, f)
	}
	if name == "constructor" || name == "__init__" || name == "__construct" {
		for _, cls := range f.Classes {
			for _, m := range cls.Kid(1).Kids {
				if m == fn {
					name = cls.Name
				}
			}
		}
	}
	made := name == "initialize" && f.Lang == code.Ruby
	if made {
		name = "new"
	}
	if name == "" {
		for _, site := range f.Calls { // called where it is written
			if site.Node.Kid(0) == fn {
				return []code.Site{site}
			}
		}
		return nil
	}
	e.Loader.Mentioning(name, f.Name)
	if list, ok := e.callers[fn]; ok && e.indexed == len(e.Loader.Loaded()) {
		return list
	}
	before := e.cut
	var list []code.Site
	sites := e.sites(name, f.Name)
	if chosen := e.byName[byIndex]; len(chosen) > 0 && len(chosen) <= maxTurns { // one of a table of functions
		sites = append(sites[:len(sites):len(sites)], chosen...)
	}
	for _, site := range sites {
		if e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		var v *Value
		if callee := site.Node.Kid(0); made && callee.Is(code.Member) {
			v = e.expr(callee.Kid(0), site.Scope, nil)
		} else if this := e.this(site.Scope, nil); made && this != nil && callee.Is(code.Name) { // new(…) in the class itself
			class := *this
			class.Kind = Class
			v = &class
		} else if site.Scope.File.Lang == code.PHP && callee.Is(code.Member) {
			if v = e.phpMethod(callee, site.Scope, nil); v == nil {
				v = e.called(callee, site.Scope, nil)
			}
		} else {
			v = e.called(callee, site.Scope, nil)
		}
		delete(e.active, site.Node)
		if v.leads(fn, 0) {
			list = append(list, site)
		} else if v.Kind == Unknown && site.Node.Kid(0).Is(code.Member) {
			e.maybe[fn] = true // an object that is not known has a method of this name
		}
	}
	if e.cut == before {
		e.callers[fn] = list
	}
	return list
}

// nameOf is the name under which a function without one of its own is called:
// of what it is put into or exported as; empty where there is none.
func (e *Eval) nameOf(fn *code.Node, f *code.File) string {
	names := e.unnamed[f]
	if names == nil {
		names = map[*code.Node]string{}
		from, kind := map[*code.Node]int{}, 1
		note := func(n *code.Node, name string) { // the first kind counts, of its names the least
			if n.Is(code.Func) && n.Name == "" && (from[n] == 0 || from[n] == kind && name < names[n]) {
				names[n], from[n] = name, kind
			}
		}
		bound := func(s *code.Scope) {
			for name, bs := range s.Names {
				for _, b := range bs {
					note(b.Value, name)
				}
			}
		}
		bound(f.Top)
		for _, s := range f.Funcs {
			bound(s)
		}
		for _, s := range f.Inside {
			bound(s)
		}
		kind++
		for _, site := range f.Sets {
			if site.Node.Is(code.Member) && site.Node.Dotted() != "module.exports" {
				note(site.Value, site.Node.Name)
			}
		}
		if f.Body != nil && javascript(f.Lang) {
			f.Body.Walk(func(n *code.Node) bool {
				if n.Is(code.Pair) && n.Kid(1) == nil {
					note(n.Kid(0), n.Name)
				}
				return true
			})
		}
		kind++
		for name, b := range f.Exports {
			note(b.Value, name)
		}
		e.unnamed[f] = names
	}
	return names[fn]
}

// leads reports whether a value is a function, or the class that it makes
// objects of, also where a condition decides.
func (v *Value) leads(fn *code.Node, depth int) bool {
	if v.Kind == Cond && len(v.Kids) == 3 && depth < 8 {
		return v.Kids[1].leads(fn, depth+1) || v.Kids[2].leads(fn, depth+1)
	}
	return v.ref != nil && (v.ref.node == fn || v.Kind == Class && holds(v.ref.node, fn))
}

// sites lists the calls that may be of a function: those by its name, and
// those by a name under which a file imports the function's file.
func (e *Eval) sites(name, file string) []code.Site {
	files := e.Loader.Loaded()
	for ; e.indexed < len(files); e.indexed++ {
		g := files[e.indexed]
		targets := map[string]string{}
		for _, site := range g.Calls {
			callee := site.Node.Kid(0)
			if callee.Is(code.Index) || callee.Is(code.Name) && indexes(g, callee.Name) {
				e.byName[byIndex] = append(e.byName[byIndex], site)
			}
			if !callee.Is(code.Name) && !callee.Is(code.Member) {
				continue
			}
			e.byName[callee.Name] = append(e.byName[callee.Name], site)
			if !callee.Is(code.Name) {
				continue
			}
			to, ok := targets[callee.Name]
			if !ok {
				to = e.importedFrom(g, callee.Name)
				targets[callee.Name] = to
			}
			if to != "" {
				e.byFile[to] = append(e.byFile[to], site)
			}
		}
	}
	list := e.byName[name]
	for _, site := range e.byFile[file] {
		if site.Node.Kid(0).Name != name {
			list = append(list[:len(list):len(list)], site)
		}
	}
	return list
}

// byIndex stands for the name of what is called where that is an element of a
// table.
const byIndex = "[]"

// indexes reports whether a name at the top of a file is an element of a table.
func indexes(f *code.File, name string) bool {
	for _, b := range f.Top.Names[name] {
		v := b.Value
		for v.Is(code.Binary) && (v.Name == "||" || v.Name == "??") {
			v = v.Kid(0)
		}
		if v.Is(code.Index) {
			return true
		}
	}
	return false
}

// importedFrom gives the file that a name at the top of a file is imported
// from; empty for any other name.
func (e *Eval) importedFrom(f *code.File, name string) string {
	for _, b := range f.Top.Names[name] {
		module := ""
		switch {
		case b.Kind == "import" && b.Import != nil:
			module = b.Import.Name
		case b.Value.Is(code.Call) && b.Value.Kid(0).Is(code.Name) && b.Value.Kids[0].Name == "require" && b.Value.Kid(1).Is(code.String):
			module = b.Value.Kids[1].Name
		}
		if module == "" {
			continue
		}
		if to, ok := e.Loader.Resolve(f, module, ""); ok {
			return to
		}
	}
	return ""
}

func holds(class, fn *code.Node) bool {
	for _, m := range class.Kid(1).Kids {
		if m == fn {
			return true
		}
	}
	return false
}

// imported gives what an import binds.
func (e *Eval) imported(f *code.File, imp, m *code.Node) *Value {
	at := f.At(imp)
	name := m.Name
	ask := name
	if name == "*" || name == "default" {
		ask = ""
	}
	path, ok := e.Loader.Resolve(f, imp.Name, ask)
	if !ok {
		module := strings.TrimPrefix(imp.Name, "node:")
		if f.Lang == code.Go {
			module = Library(module)
		}
		if m.Flag&code.TopName != 0 {
			module = m.Alias
		}
		if name != "*" && name != "default" {
			module += "." + name
		}
		if u, ok := envMaps[module]; ok { // from os import environ
			return &Value{Kind: EnvMap, Unset: u, At: at}
		}
		return &Value{Kind: External, Text: module, At: at}
	}
	step := Step{at, "imports " + path}
	if name == "*" {
		if m.Flag&code.TopName != 0 && strings.Contains(imp.Name, ".") {
			// `import a.b` binds a; members lead on from there.
			if top, ok := e.Loader.Resolve(f, m.Alias, ""); ok {
				path = top
			}
		}
		return (&Value{Kind: Module, Text: path, At: at}).with(step)
	}
	if v := e.fromModule(path, name, f.Lang == code.Python); v != nil {
		return v.with(step)
	}
	if f.Lang == code.Python { // from package import submodule
		if sub, ok := e.Loader.Resolve(f, joinModule(imp.Name, name), ""); ok {
			return (&Value{Kind: Module, Text: sub, At: at}).with(step)
		}
	}
	return unknown(name+" is not found in "+path, at)
}

func joinModule(module, name string) string {
	if strings.HasSuffix(module, ".") {
		return module + name
	}
	return module + "." + name
}

// fromModule gives what a module of the tree exports under a name.
func (e *Eval) fromModule(path, name string, py bool) *Value {
	key := path + "#" + name
	if e.busy(key) {
		return nil
	}
	e.active[key] = true
	defer delete(e.active, key)
	if f := e.Loader.File(path); f != nil {
		return e.member(f, name, nil)
	}
	if d := e.Loader.Data(path); d != nil {
		v := FromDocument(d)
		if name == "default" {
			return v
		}
		return v.Get(name)
	}
	return nil
}

// member gives what a file exports (JavaScript) or defines (Python) under a
// name; nil where it does not.
func (e *Eval) member(f *code.File, name string, c *context) *Value {
	if f.Lang == code.Python || f.Lang == code.Go {
		if bs := f.Top.Names[name]; len(bs) > 0 {
			if f.Lang == code.Go {
				bs = e.elsewhere(bs, name, f)
			}
			if v := e.bindings(bs, f.Top, nil, 0); v != nil {
				return e.grown(f, name, v, 0)
			}
		}
		if v := e.starred(f, name); v != nil {
			return e.grown(f, name, v, 0)
		}
		if f.Lang == code.Go {
			return e.samePackage(name, f)
		}
		return nil
	}
	if b, ok := f.Exports[name]; ok {
		return e.exported(f, b)
	}
	if b, ok := f.Exports["="]; ok {
		v := e.exported(f, b)
		if v == nil || name == "default" || name == "=" {
			return v
		}
		return e.key(v, name, f.Top, nil, v.At)
	}
	for _, star := range f.Stars {
		if path, ok := e.Loader.Resolve(f, star.Name, ""); ok {
			if v := e.fromModule(path, name, false); v != nil {
				return v
			}
		}
	}
	if name == "default" || name == "=" {
		if len(f.Exports) > 0 {
			return &Value{Kind: Module, Text: f.Name, At: place.Whole(f.Name)}
		}
	}
	return nil
}

// grown adds to a list or a dictionary at the top of a Python file what is put
// into it later, and before the byte use where that is not 0: with append,
// extend, insert, update or an assignment to an element.
func (e *Eval) grown(f *code.File, name string, v *Value, use int32) *Value {
	if v.Kind == Object {
		return e.changedBy(f.Top, name, v, f.Top, use, nil)
	}
	if v.Kind != List && v.Kind != Op && v.Kind != Cond {
		return v
	}
	for _, site := range f.Calls {
		fn, args := site.Node.Kid(0), site.Node.Args()
		if !fn.Is(code.Member) || !fn.Kid(0).Is(code.Name) || fn.Kids[0].Name != name || site.Scope != f.Top || len(args) == 0 || use > 0 && site.Node.Off > use {
			continue
		}
		if fn.Name != "append" && fn.Name != "insert" && fn.Name != "extend" || e.busy(site.Node) {
			continue
		}
		e.active[site.Node] = true
		more := e.Expr(args[len(args)-1], site.Scope)
		delete(e.active, site.Node)
		if fn.Name != "extend" {
			more = &Value{Kind: List, Kids: []*Value{more}, At: more.At}
		}
		w := op("+", true, v.At, v, more)
		for i := len(site.Guards) - 1; i >= 0; i-- {
			w = e.guarded(site.Guards[i], w, v, nil)
		}
		v = w
	}
	return v
}

// filling are the methods that write into a map, by what they write: an entry,
// an entry where there is none of its key, or all that other maps hold (Python
// 3.14 "dict"; Ruby 3.4 "Hash"; java.util.Map of Java 25; kotlin.collections 2.2;
// ECMA-262, 24.1.3 "Map").
var filling = map[code.Language]map[string]string{
	code.Python:     {"update": "maps", "setdefault": "entry where there is none"},
	code.Ruby:       {"merge!": "maps", "update": "maps", "store": "entry"},
	code.Java:       {"put": "entry", "putIfAbsent": "entry where there is none", "putAll": "maps"},
	code.Kotlin:     {"put": "entry", "putIfAbsent": "entry where there is none", "putAll": "maps"},
	code.JavaScript: {"set": "entry"},
	code.TypeScript: {"set": "entry"},
	code.JSX:        {"set": "entry"},
}

// changes lists the places of a file that change an object by its name:
// x.key = …, x["key"] = …, Object.assign(x, …), x.update(…).
func (e *Eval) changes(f *code.File) map[string][]code.Site {
	if m, ok := e.changed[f]; ok {
		return m
	}
	m := map[string][]code.Site{}
	for _, site := range f.Sets {
		base := site.Node.Kid(0)
		for base.Is(code.Member) || base.Is(code.Index) && base.Kid(1).Is(code.String) {
			base = base.Kid(0)
		}
		if base.Is(code.Name) {
			m[base.Name] = append(m[base.Name], site)
		}
	}
	for _, site := range f.Calls {
		fn := site.Node.Kid(0)
		switch {
		case !fn.Is(code.Member):
		case filling[f.Lang][fn.Name] != "" && fn.Kid(0).Is(code.Name):
			m[fn.Kids[0].Name] = append(m[fn.Kids[0].Name], site)
		case f.Lang == code.Go: // below
		case javascript(f.Lang) && fn.Dotted() == "Object.assign" && site.Node.Kid(1).Is(code.Name):
			m[site.Node.Kids[1].Name] = append(m[site.Node.Kids[1].Name], site)
		}
	}
	if f.Lang == code.Go { // what is handed over by its address
		pointers := map[string]bool{}
		for _, s := range f.Funcs {
			for name, bs := range s.Names {
				for _, b := range bs {
					pointers[name] = pointers[name] || b.Value.Is(code.Object) && b.Value.Flag&code.Address != 0 || b.Value.Is(code.Call) && b.Value.Kid(0).Is(code.Name) && b.Value.Kids[0].Name == "new"
				}
			}
		}
		for _, site := range f.Calls {
			if fn := site.Node.Kid(0); fn.Is(code.Member) && fn.Kid(0).Is(code.Name) { // a method that may write into it
				m[calledOn+fn.Kids[0].Name] = append(m[calledOn+fn.Kids[0].Name], site)
			}
			for _, a := range site.Node.Args() {
				if a.Is(code.Name) && (a.Flag&code.Address != 0 || pointers[a.Name]) {
					m[a.Name] = append(m[a.Name], site)
				}
			}
		}
	}
	for _, list := range m {
		slices.SortStableFunc(list, func(a, b code.Site) int { return int(a.Node.Off - b.Node.Off) })
	}
	e.changed[f] = m
	return m
}

// changedBy gives an object with what is written into it under its name, in
// the scope x that declares the name: all that stands before the byte use in
// the function that asks, and all that other functions do.
func (e *Eval) changedBy(x *code.Scope, name string, v *Value, from *code.Scope, use int32, c *context) *Value {
	f := x.File
	out := v
	sites := e.changes(f)[name]
	if f.Lang == code.Go && v.Text != "" {
		sites = e.withMethods(sites, e.changes(f)[calledOn+name], v)
	}
	for _, site := range sites {
		n := site.Node
		if declares(site.Scope, name) != x || use > 0 && site.Scope.Func == from.Func && n.Off > use || e.busy(n) {
			continue
		}
		if out == v {
			w := *v
			w.Keys, w.Kids = slices.Clone(v.Keys), slices.Clone(v.Kids)
			out = &w
			e.total += len(v.Keys) // what is copied counts, too
		}
		e.active[n] = true
		turns, tests, ok := e.turnsWith(site, c)
		if !ok {
			turns, tests = []*context{contextOf(c, site.Scope)}, []*Value{nil}
		}
		for i, in := range turns {
			e.changedAt(out, name, site, tests[i], in)
		}
		delete(e.active, n)
	}
	return out
}

// changedAt adds to an object what one place writes into it, where the test
// holds; nil stands for always.
func (e *Eval) changedAt(out *Value, name string, site code.Site, test *Value, c *context) {
	f, n := site.Scope.File, site.Node
	var o *Value
	if f.Lang == code.Go && n.Is(code.Call) {
		o = e.handed(out, name, site, c)
	} else {
		o = e.change(f, site, out, c)
		if inner := n.Kid(0); (n.Is(code.Member) || n.Is(code.Index)) && (inner.Is(code.Member) || inner.Is(code.Index)) {
			o = deeper(out, n.Kids[0], o)
		}
	}
	if o == nil {
		return
	}
	if o.ref != nil && len(o.ref.done) > 0 {
		out.ref = o.ref
	}
	if len(site.Guards) == 0 && test == nil {
		out.spread(o, false)
		return
	}
	for _, g := range site.Guards {
		if t := e.guardIn(g, c); test == nil {
			test = t
		} else {
			test = op("&&", t.Py, t.At, test, t)
		}
	}
	out.choose(test, o, &Value{Kind: Object}, f.Lang == code.Python)
}

// calledOn stands before a name under which the calls of its methods are listed.
const calledOn = "\x00"

// withMethods adds to the places that change an object the calls of its methods
// that may write into it (Go).
func (e *Eval) withMethods(sites, calls []code.Site, v *Value) []code.Site {
	var more []code.Site
	for _, site := range calls {
		if m := e.goMethod(v, site.Node.Kids[0].Name); m != nil && receiver(m.ref.node) >= 0 && !slices.ContainsFunc(sites, func(x code.Site) bool { return x.Node == site.Node }) {
			more = append(more, site)
		}
	}
	if len(more) == 0 {
		return sites
	}
	more = append(more, sites...)
	slices.SortStableFunc(more, func(a, b code.Site) int { return int(a.Node.Off - b.Node.Off) })
	return more
}

// changedOneOf is changedBy for one of several objects, and for what is not
// known but for what is written into it.
func (e *Eval) changedOneOf(x *code.Scope, name string, v *Value, from *code.Scope, use int32, c *context) *Value {
	switch v.Kind {
	case Cond, Op, Unknown:
	case List:
		if x.File.Lang != code.PHP || len(v.Kids) > 0 { // an array of PHP may have keys later
			return v
		}
	default:
		return v
	}
	written := false
	for _, site := range e.changes(x.File)[name] {
		n := site.Node
		written = written || (n.Is(code.Member) || n.Is(code.Index)) && !n.Kid(0).Is(code.Index) && declares(site.Scope, name) == x && !(use > 0 && site.Scope.Func == from.Func && n.Off > use)
	}
	if !written {
		return v
	}
	if v.choices(maxSides) >= maxSides {
		return unknown(tooMany, v.At)
	}
	if w := v.settled(0); w != nil {
		return w.leaves(func(o *Value) *Value { return e.changedBy(x, name, o, from, use, c) })
	}
	if v.Kind == List {
		return e.changedBy(x, name, &Value{Kind: Object, At: v.At}, from, use, c)
	}
	if v.Kind != Unknown {
		return v
	}
	return e.changedBy(x, name, &Value{Kind: Object, At: v.At, Keys: []string{"..."}, Kids: []*Value{v}}, from, use, c)
}

// leaves changes each of the objects that conditions choose between.
func (v *Value) leaves(change func(*Value) *Value) *Value {
	switch v.Kind {
	case Object:
		return change(v)
	case Cond:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].leaves(change), v.Kids[2].leaves(change)}
		return &w
	}
	return v
}

// ofEach is what is asked of each of the objects that conditions choose between;
// what is asked of nothing ends the program. Nil where none of them is an object.
func (v *Value) ofEach(ask func(*Value) *Value) *Value {
	if !v.objects(0) || v.choices(maxSides) >= maxSides {
		return nil
	}
	switch v.Kind {
	case Object:
		return ask(v)
	case Cond:
		w := *v
		w.Kids = []*Value{v.Kids[0], nil, nil}
		for i := 1; i < 3; i++ {
			switch k := v.Kids[i]; {
			case k.objects(0) || k.Kind == Undef || k.Kind == Null:
				w.Kids[i] = k.askedOf(ask)
			case k.Kind == Unknown:
				w.Kids[i] = k
			default:
				w.Kids[i] = unknown("what is asked of what is not known", k.At)
			}
		}
		return &w
	}
	return nil
}

// askedOf is ofEach for what may be nothing as a whole.
func (v *Value) askedOf(ask func(*Value) *Value) *Value {
	if v.Kind == Undef || v.Kind == Null {
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: v.At}
	}
	return v.ofEach(ask)
}

// deeper gives what is written into an object that another one holds: the
// property of the outer one with it.
func deeper(out *Value, holder *code.Node, o *Value) *Value {
	if !holder.Is(code.Member) && !holder.Is(code.Index) {
		return o
	}
	name := holder.Name
	if holder.Is(code.Index) {
		name = holder.Kid(1).Name
	}
	var names []string
	for x := holder.Kid(0); x.Is(code.Member) || x.Is(code.Index); x = x.Kid(0) {
		key := x.Name
		if x.Is(code.Index) {
			key = x.Kid(1).Name
		}
		names = append([]string{key}, names...)
	}
	in := out
	for _, k := range append(names, name) {
		in = in.Get(k)
	}
	return deeper(out, holder.Kid(0), &Value{Kind: Object, At: o.At, Keys: []string{name}, Kids: []*Value{in.written(o, 0)}})
}

// written is an object with what is written into it, also where a condition
// decides which of two it is.
func (v *Value) written(o *Value, depth int) *Value {
	switch {
	case v != nil && v.Kind == Object:
		w := *v
		w.Keys, w.Kids = slices.Clone(v.Keys), slices.Clone(v.Kids)
		w.spread(o, false)
		return &w
	case v != nil && v.Kind == Cond && depth < 12:
		w := *v
		w.Kids = []*Value{v.Kids[0], v.Kids[1].written(o, depth+1), v.Kids[2].written(o, depth+1)}
		return &w
	}
	return unknown("what is written into an object that is not known", o.At)
}

// declares finds the scope in which a name is declared.
func declares(s *code.Scope, name string) *code.Scope {
	for x := s; x != nil; x = x.Parent {
		if len(x.Names[name]) > 0 {
			return x
		}
	}
	return nil
}

// assignedTo is what a place writes into a property: what stands there, or what
// that makes of what the property holds (+=, ||=).
func (e *Eval) assignedTo(now *Value, key string, site code.Site, c *context) *Value {
	v := e.expr(site.Value, site.Scope, c)
	sign := strings.TrimSuffix(site.Op, "=")
	if sign == "" || sign == ":" {
		return v
	}
	holder := now
	if in := site.Node.Kid(0); in.Is(code.Member) || in.Is(code.Index) { // of an object in the object
		holder = e.expr(in, site.Scope, c)
	}
	before := holder.Get(key)
	if before == nil {
		before = &Value{Kind: Undef, At: v.At}
	}
	if l := site.Scope.File.Lang; l == code.Ruby && (sign == "||" || sign == "&&") {
		is := op("rubytrue", true, v.At, before)
		if sign == "||" {
			return &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{is, before, v}}
		}
		return &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{is, v, before}}
	}
	return op(sign, site.Scope.File.Lang == code.Python, v.At, before, v)
}

// change gives what one place writes into an object.
func (e *Eval) change(f *code.File, site code.Site, now *Value, c *context) *Value {
	n := site.Node
	o := &Value{Kind: Object, At: f.At(n)}
	if site.Turn {
		why := unknown("set in a loop", o.At)
		switch k := n.Kid(1); {
		case n.Is(code.Member):
			o.Keys, o.Kids = []string{n.Name}, []*Value{why}
		case n.Is(code.Index) && k.Is(code.String):
			o.Keys, o.Kids = []string{k.Name}, []*Value{why}
		default:
			o.Keys, o.Kids = []string{"..."}, []*Value{why}
		}
		return o
	}
	if f.Lang == code.Ruby && site.Value.Is(code.Name) {
		if v := e.expr(site.Value, site.Scope, c); v.Kind == Undef && v.Text == notGiven {
			return o // the flag that sets it is not given
		}
	}
	switch {
	case n.Is(code.Member):
		o.Keys, o.Kids = []string{n.Name}, []*Value{e.assignedTo(now, n.Name, site, c)}
	case n.Is(code.Index):
		if k := e.expr(n.Kid(1), site.Scope, c).folded(); k.Kind == Str {
			o.Keys, o.Kids = []string{k.Text}, []*Value{e.assignedTo(now, k.Text, site, c)}
		} else {
			o.Keys, o.Kids = []string{"..."}, []*Value{unknown("an element chosen while the program runs", o.At)}
		}
	default:
		args, keys := e.args(n, site.Scope, c)
		switch how := filling[f.Lang][n.Kid(0).Name]; {
		case javascript(f.Lang) && how != "" && now.Text != "Map":
			return o
		case how == "entry" || how == "entry where there is none":
			if len(args) != 2 {
				return o
			}
			k := args[0].folded()
			if k.Kind != Str {
				o.Keys, o.Kids = []string{"..."}, []*Value{unknown("what is put into a map", o.At)}
				return o
			}
			v := args[1]
			if how != "entry" {
				v = now.held(k.Text, v)
			}
			o.Keys, o.Kids = []string{k.Text}, []*Value{v}
			return o
		case how == "" && len(args) > 0: // Object.assign(to, from, …)
			args = args[1:]
		}
		for _, a := range args {
			o.spread(a, f.Lang == code.Python)
		}
		for _, a := range n.Args() {
			if a.Is(code.Keyword) && keys[a.Name] != nil {
				o.Keys, o.Kids = append(o.Keys, a.Name), append(o.Kids, keys[a.Name])
			}
		}
	}
	return o
}

func (e *Eval) exported(f *code.File, b *code.Binding) *Value {
	if e.busy(b) {
		return nil
	}
	if bs := f.Top.Names[b.Name]; len(bs) > 0 && b.Kind != "import" && bs[len(bs)-1] == b {
		return e.bindings(bs, f.Top, nil, 0)
	}
	e.active[b] = true
	defer delete(e.active, b)
	return e.binding(b, f.Top, nil)
}

// FromDocument turns a data file into a value.
func FromDocument(n *document.Node) *Value {
	if n == nil {
		return &Value{Kind: Undef}
	}
	switch n.Kind {
	case document.String:
		return text(n.Text, n.At())
	case document.Number:
		f, err := strconv.ParseFloat(n.Text, 64)
		if err != nil {
			return text(n.Text, n.At())
		}
		return number(f, n.At())
	case document.Bool:
		return boolean(n.Text == "true", n.At())
	case document.Map:
		v := &Value{Kind: Object, At: n.At()}
		for _, k := range n.Kids {
			v.Keys, v.Kids = append(v.Keys, k.Key), append(v.Kids, FromDocument(k))
		}
		return v
	case document.List:
		v := &Value{Kind: List, At: n.At()}
		for _, k := range n.Kids {
			v.Kids = append(v.Kids, FromDocument(k))
		}
		return v
	}
	return &Value{Kind: Null, At: n.At()}
}

func (e *Eval) index(n *code.Node, s *code.Scope, c *context) *Value {
	if s.File.Lang == code.Python {
		if v := e.section(n, s, c); v != nil {
			return v
		}
	}
	if s.File.Lang == code.CSharp && n.Kid(1).Is(code.String) {
		if key, ok := e.configuration(n.Kids[0], s, c); ok {
			return e.setting(key+n.Kids[1].Name, s.File.At(n))
		}
	}
	base := e.expr(n.Kids[0], s, c)
	if r := n.Kid(1); r.Is(code.Unknown) && r.Name == code.Rest1 {
		if from := e.expr(r.Kid(0), s, c); from.Kind == Num && from.Num >= 0 {
			if v := e.rest(base, int(from.Num), s.File.At(n)); v != nil {
				return v
			}
			if base.Kind == Op || base.Kind == Env || base.Kind == Str || base.Kind == Cond {
				return op("from", true, s.File.At(n), base, from)
			}
		}
		return unknown("a part of a list", s.File.At(n))
	}
	k := e.expr(n.Kid(1), s, c)
	if k.Kind == Str {
		v := e.property(n, base, k.Text, s, c)
		if base.Kind == EnvMap && v.Kind == Env && s.File.Lang == code.Python {
			w := *v
			w.Unset = Raises
			return &w
		}
		return v
	}
	if k.Kind == Op && len(k.Variables()) == 0 { // a sum of what is written out
		switch o := k.Under(Environ{}); o.Kind {
		case Num:
			k = &Value{Kind: Num, Num: o.Num, At: k.At}
		case Str:
			return e.property(n, base, o.Text, s, c)
		}
	}
	if k.Kind == Num && (base.Kind == List || base.Kind == Op) {
		if base.Kind == Op && base.Text == "kept" {
			return e.key(base, strconv.Itoa(int(k.Num)), s, c, s.File.At(n))
		}
		if base.Kind == List && int(k.Num) >= 0 && int(k.Num) < len(base.Kids) {
			return base.Kids[int(k.Num)]
		}
		if base.Kind == List && pastEnd(s.File.Lang) {
			return &Value{Kind: Undef, At: s.File.At(n)}
		}
		return op("index", s.File.Lang == code.Python, s.File.At(n), base, k)
	}
	if k.Kind == Num && base.Kind == External && base.Text == "main.args" && s.File.Lang == code.Ruby {
		return e.argumentOr(int(k.Num), s.File.At(n))
	}
	if k.Kind == Num && base.Kind == External && base.Text == "$argv" {
		return e.argumentOr(int(k.Num)-1, s.File.At(n))
	}
	if k.Kind == Num && base.Kind == External && base.Text == "main.args" {
		return e.argumentAt(int(k.Num), s.File.At(n))
	}
	if skip, ok := argumentLists[base.Text]; k.Kind == Num && base.Kind == External && (ok || base.Text == "os.Args") {
		if base.Text == "os.Args" {
			skip = 1
		}
		if i := int(k.Num) - skip; i >= 0 && i < len(e.Args) {
			if a := e.Args[i]; a.Kind != Str { // without quotes an empty variable leaves no argument
				return op("||", false, a.At, a, &Value{Kind: Undef})
			}
			return e.Args[i]
		} else if i >= 0 {
			return &Value{Kind: Undef, At: s.File.At(n)}
		}
	}
	if base.Kind == EnvMap {
		if o := k.Under(Environ{}); o.Kind == Str {
			return e.property(n, base, o.Text, s, c)
		}
		return unknown("a variable whose name is made while the program runs", s.File.At(n))
	}
	if base.Kind == Object { // config[env]: one of several
		if len(k.Variables()) > 0 && len(base.Keys) <= 24 && !slices.Contains(base.Keys, "...") {
			return pick(k, base)
		}
		return unknown("one of several settings, chosen by "+s.File.Text(n.Kid(1)), s.File.At(n))
	}
	return unknown("an element chosen while the program runs", s.File.At(n))
}

// rest is a list from one place on: of the arguments of the program, of a list
// that is written out; nil for any other.
func (e *Eval) rest(base *Value, from int, at place.Span) *Value {
	list := base.Kids
	switch {
	case base.Kind == List:
	case base.Kind == External && (base.Text == "sys.argv" || base.Text == "os.Args" || base.Text == "process.argv"):
		from--
		if base.Text == "process.argv" {
			from--
		}
		if from < 0 {
			return nil
		}
		list = e.Args
		for _, a := range list {
			if a.Kind != Str { // an empty one without quotes leaves nothing behind
				return nil
			}
		}
	default:
		return nil
	}
	return &Value{Kind: List, At: at, Py: base.Py, Kids: append([]*Value(nil), list[min(from, len(list)):]...)}
}

// pick turns an object indexed by a value into conditions on that value.
func pick(k, base *Value) *Value { return pickOr(k, base, &Value{Kind: Undef}) }

// pickOr is pick with what stands in for a key that is not there.
func pickOr(k, base, v *Value) *Value {
	for i := range base.Keys {
		test := op("===", false, k.At, k, text(base.Keys[i], base.At))
		v = &Value{Kind: Cond, Kids: []*Value{test, base.Kids[i], v}, At: base.At}
	}
	return v
}

// property gives base.name where the base has been evaluated.
func (e *Eval) property(n *code.Node, base *Value, name string, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	if base.Kind == EnvMap && n.Is(code.Member) && !javascript(s.File.Lang) { // what it does, not a variable
		return unknown("the "+name+" of the environment", at)
	}
	v := e.key(base, name, s, c, at)
	if v.Kind == Env || v.Kind == External {
		w := *v
		w.At = at
		return &w
	}
	return v
}

// Of is a property of something outside of the tree, as a library gives it: an
// option of the command line, a setting.
func (e *Eval) Of(base *Value, name string, s *code.Scope, at place.Span) *Value {
	return e.key(base, name, s, nil, at)
}

// envMaps are the objects that hold the environment: Node.js documentation of
// process.env, Python's of os.environ, Deno's and Bun's of their own.
var envMaps = map[string]Unset{"process.env": ReadsUndef, "Bun.env": ReadsUndef, "bun.env": ReadsUndef, "os.environ": ReadsNull, "globalThis.process.env": ReadsUndef, "global.process.env": ReadsUndef, "import.meta.env": ReadsUndef}

// key gives the value of a property, without a place of its own.
func (e *Eval) key(base *Value, name string, s *code.Scope, c *context, at place.Span) *Value {
	keep := func(v *Value) *Value {
		for i := len(base.Steps) - 1; i >= 0; i-- {
			v = v.with(base.Steps[i])
		}
		return v
	}
	if (base.Kind == Cond || base.Kind == Op) && base.choices(maxSides) >= maxSides {
		return unknown(tooMany, at)
	}
	switch base.Kind {
	case Env:
		if base.Text == "\x00" { // the program has ended
			return base
		}
	case EnvMap:
		if strings.HasPrefix(name, "npm_") && !strings.HasPrefix(name, "npm_package_config_") {
			return unknown(name+" is set by the package manager", at)
		}
		return keep(e.assigned(&Value{Kind: Env, Text: name, Unset: base.Unset, At: at}))
	case Object:
		if i, ok := indexed(name); ok && base.Text == "tuple" && i < len(base.Kids) {
			return keep(base.Kids[i])
		}
		if v := base.Get(name); v != nil {
			if v.partly(0) && at.File != "" {
				switch s.File.Lang { // what a key that is not there gives
				case code.Python:
					v = v.filled(&Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}, 0)
				case code.Go:
					v = v.filled(text("", at), 0)
				}
			}
			if s.File.Lang == code.Go && base.Text != "" {
				if w := e.goSet(base, name, at); w != nil {
					return keep(w)
				}
			}
			return keep(v)
		}
		for i, k := range base.Keys {
			if k == "..." {
				from := base.Kids[i]
				if from.Kind == Unknown {
					return unknown(from.Text, at)
				}
				return unknown("a property that comes from "+from.String(), at)
			}
		}
		if s.File.Lang == code.Go {
			if m := e.goMethod(base, name); m != nil {
				return m
			}
			if v := e.goSet(base, name, at); v != nil {
				return v
			}
			if base.Text != "" { // a field that is not given has its zero value
				return text("", at)
			}
		}
		return &Value{Kind: Undef, At: at}
	case External:
		if base.Text == "flask.Flask().config" && name != "get" && name == strings.ToUpper(name) {
			if v := e.Config(name); v != nil {
				return keep(v)
			}
		}
		if base.Text == "django.conf.settings" && e.Settings != nil {
			if v := e.Name(e.Settings, name); v != nil {
				return keep(v)
			}
			if name == "DEBUG" { // Django's own default (its settings reference)
				return boolean(false, at)
			}
		}
		if base.Text == "main.args" && (name == "length" || name == "size") {
			return e.arguments(at)
		}
		if i, ok := indexed(name); ok {
			if list := e.argumentList(base, at); list != nil {
				if i < len(list.Kids) {
					return list.Kids[i]
				}
				return &Value{Kind: Undef, At: at}
			}
		}
		path := base.Text + "." + name
		if jvm(s.File.Lang) {
			path = simple(path)
		}
		if name == "default" && !strings.Contains(base.Text, "()") {
			path = base.Text
		}
		if v := e.argument(base, name, at); v != nil {
			return keep(v)
		}
		if v := e.parsed(base, name, at); v != nil {
			return keep(v)
		}
		if u, ok := envMaps[path]; ok {
			return &Value{Kind: EnvMap, Unset: u, At: at}
		}
		if base.Text == "config" && javascript(s.File.Lang) && name != "get" && name != "has" && name != "util" {
			if v := e.layered(name, at); v != nil {
				return keep(v)
			}
			return &Value{Kind: Undef, At: at}
		}
		if first, ok := forks[path]; ok {
			worker := op("worker", false, at)
			if first {
				return op("!", false, at, worker)
			}
			return worker
		}
		if path == "module.parent" {
			if s.File.Name == e.Main {
				return &Value{Kind: Null, At: at}
			}
		}
		if path == "import.meta.main" {
			return boolean(s.File.Name == e.Main, at)
		}
		return &Value{Kind: External, Text: path, At: at, Recv: base, Steps: base.Steps}
	case Module:
		if f := e.Loader.File(base.Text); f != nil {
			if v := e.fromModule(base.Text, name, f.Lang == code.Python); v != nil {
				return keep(v)
			}
			if f.Lang == code.Python {
				if sub, ok := e.Loader.Resolve(f, "."+name, ""); ok {
					return keep(&Value{Kind: Module, Text: sub, At: at})
				}
			}
		} else if v := e.fromModule(base.Text, name, false); v != nil {
			return keep(v)
		}
		return unknown(name+" is not found in "+base.Text, at)
	case Instance, Class:
		before := e.methods
		e.methods = e.calling != nil && e.calling.Is(code.Member) && e.calling.Name == name && s.File.At(e.calling) == at
		v := e.attribute(base, name, c)
		if v == nil && s.File.Lang == code.Ruby {
			v = e.reopened(base, name, c)
		}
		e.methods = before
		if v != nil && s.File.Lang == code.Python && base.Kind == Instance && v.Kind != Func {
			v = e.setLater(base, name, v)
		}
		if v != nil {
			return keep(v)
		}
		return unknown("the attribute "+name+" of "+base.Text, at)
	case Cond:
		if len(base.Kids) == 3 {
			return &Value{Kind: Cond, Py: base.Py, At: at, Kids: []*Value{base.Kids[0], e.key(base.Kids[1], name, s, c, at), e.key(base.Kids[2], name, s, c, at)}, Steps: base.Steps}
		}
	case Op:
		if base.Text == "kept" && name == "0" { // the first of a list that counts as true
			v := &Value{Kind: Undef, At: at}
			for i := len(base.Kids) - 1; i >= 0; i-- {
				v = op("||", false, at, base.Kids[i], v)
			}
			return keep(v)
		}
		if i, err := strconv.Atoi(name); err == nil && (base.Text == "match" || base.Text == "split" || base.Text == "partition" || base.Text == "rpartition") {
			return keep(op("index", s.File.Lang == code.Python, at, base, &Value{Kind: Num, Num: float64(i), At: at}))
		}
		switch base.Text {
		case "unwrap":
			return &Value{Kind: Op, Text: "unwrap", Py: base.Py, At: at, Kids: []*Value{e.key(base.Kids[0], name, s, c, at)}, Steps: base.Steps}
		case "||", "??", "catch":
			return &Value{Kind: Op, Text: base.Text, Py: base.Py, At: at, Kids: []*Value{e.key(base.Kids[0], name, s, c, at), e.key(base.Kids[1], name, s, c, at)}, Steps: base.Steps}
		}
		if name == "length" {
			return op("length", false, at, base)
		}
		if base.Text == "json" || base.Text == "jsonfield" {
			return op("jsonfield", false, at, base, text(name, at))
		}
	case Undef, Null:
		return &Value{Kind: Undef, At: at}
	case Num, Bool:
		if name == "value" && (s.File.Lang == code.Python || s.File.Lang == code.PHP) { // of a member of an Enum
			return base
		}
	case List, Str:
		if name == "value" && base.Kind == Str && (s.File.Lang == code.Python || s.File.Lang == code.PHP) {
			return base
		}
		if name == "length" {
			return op("length", false, at, base)
		}
		if i, err := strconv.Atoi(name); err == nil && i < len(base.Kids) {
			return base.Kids[i]
		}
	case Func:
		// Properties of functions are set from outside; see Sets.
		if v := e.setOn(base, name); v != nil {
			return keep(v)
		}
	}
	if name == "env" && base.Kind == Unknown {
		return unknown("the environment of "+base.Text, at)
	}
	return unknown("the property "+name+" of what is not known", at)
}

func (e *Eval) setOn(base *Value, name string) *Value {
	if base.ref == nil {
		return nil
	}
	f := base.ref.file
	for _, site := range f.Sets {
		if site.Node.Is(code.Member) && site.Node.Name == name && site.Node.Kid(0).Is(code.Name) && site.Node.Kids[0].Name == base.Text && !e.busy(site.Node) {
			e.active[site.Node] = true
			defer delete(e.active, site.Node)
			return e.expr(site.Value, site.Scope, nil)
		}
	}
	return nil
}
