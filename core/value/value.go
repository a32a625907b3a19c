// Package value says what an expression comes to: a literal, a variable of
// the environment with or without a fallback, a mixture of these, or unknown
// with the reason. It follows names through bindings, functions, classes and
// files of a component, and notes each step it takes.
//
// Expr gives a Value, which still knows the variables in it; Under gives what
// the Value comes to in a given environment. Neither runs anything.
package value

import (
	"maps"
	"slices"
	"sort"
	"strconv"
	"strings"

	"ubique/core/place"
)

// Kind is the kind of a value.
type Kind uint8

// The kinds of values.
const (
	Unknown  Kind = iota // Text: the reason
	Str                  // Text
	Num                  // Num
	Bool                 // Num is 1 or 0
	Null                 // null, None
	Undef                // undefined, nothing returned
	Env                  // Text: the variable; Unset says what it reads as when unset
	EnvMap               // the environment as a whole
	Op                   // Text: the operator; Kids: operands
	Cond                 // Kids: test, yes, no
	Object               // Keys and Kids
	List                 // Kids
	External             // something of a package or the language: Text is its path, () after calls
	Func                 // a function of the tree
	Class                // a class of the tree
	Instance             // an object of a class of the tree
	Module               // a file of the tree: Text is its path
)

// Unset says what a variable that is not set reads as.
type Unset uint8

// What an unset variable reads as.
const (
	ReadsUndef Unset = iota // undefined
	ReadsNull               // None
	Raises                  // an exception or an exit
	ReadsEmpty              // the empty text, as a shell does
)

// Step is one step from a use to the place where a value is made.
type Step struct {
	At   place.Span
	Note string
}

// Value is what an expression comes to.
type Value struct {
	Kind  Kind
	Text  string
	Num   float64
	Unset Unset
	Fold  bool // a variable that is read in any letter case
	Py    bool // an operator with Python's meaning
	Keys  []string
	Kids  []*Value
	At    place.Span // where it is written
	Recv  *Value     // what the method of an External was called on
	Props *Value     // an Object of what a program sets on an External while it is gone through; nil for nothing
	ref   *ref       // the code behind a Func, Class or Instance
	Steps []Step
	last  *place.Span // where the last part of a text is written that is put together; nil: at At
}

// Last is where the end of a text is written: the port of an address.
func (v *Value) Last() place.Span {
	if v.last != nil {
		return *v.last
	}
	return v.At
}

// Literal text, number and boolean values.
func text(s string, at place.Span) *Value    { return &Value{Kind: Str, Text: s, At: at} }
func number(n float64, at place.Span) *Value { return &Value{Kind: Num, Num: n, At: at} }
func boolean(b bool, at place.Span) *Value {
	v := &Value{Kind: Bool, At: at}
	if b {
		v.Num = 1
	}
	return v
}
func unknown(why string, at place.Span) *Value { return &Value{Kind: Unknown, Text: why, At: at} }

// Text makes a literal text.
func Text(s string, at place.Span) *Value { return text(s, at) }

// Number makes a literal number.
func Number(n float64, at place.Span) *Value { return number(n, at) }

// EnvOr is what a variable holds, and another value where it is not set; nil
// stands for nothing.
func EnvOr(name string, other *Value, at place.Span) *Value {
	if other == nil {
		other = &Value{Kind: Undef, At: at}
	}
	return op("unset", false, at, &Value{Kind: Env, Text: name, Unset: ReadsNull, At: at}, other)
}

// No is a condition that never holds.
func No(at place.Span) *Value { return boolean(false, at) }

// Yes makes the value of a condition that always holds.
func Yes(at place.Span) *Value { return boolean(true, at) }

// NotKnown makes an unknown value with its reason.
func NotKnown(why string, at place.Span) *Value { return unknown(why, at) }

// Variable makes a variable of the environment.
func Variable(name string, unset Unset, at place.Span) *Value {
	return &Value{Kind: Env, Text: name, Unset: unset, At: at}
}

// Or makes `a`, or `b` where a is unset or empty, as a shell's ${a:-b}.
func Or(a, b *Value, at place.Span) *Value {
	return &Value{Kind: Op, Text: "||", Kids: []*Value{a, b}, At: at}
}

// Limits on what is made of parts: a hostile source doubles a text or a list
// forty times over.
const (
	maxText  = 1 << 16 // bytes
	maxParts = 1 << 13 // elements, properties
	tooLong  = "a text that is too long to be followed"
	tooMany  = "more elements than are followed"
)

// Concat joins texts.
func Concat(parts ...*Value) *Value {
	if len(parts) == 1 {
		return parts[0]
	}
	all := true
	var b strings.Builder
	for _, p := range parts {
		all = all && p.Kind == Str
		if b.Len()+len(p.Text) > maxText {
			return unknown(tooLong, p.At)
		}
		b.WriteString(p.Text)
	}
	if all && len(parts) > 0 {
		v := text(b.String(), parts[0].At)
		if end := parts[len(parts)-1].Last(); end.Line > 0 && end != v.At {
			v.last = &end
		}
		return v
	}
	v := &Value{Kind: Op, Text: "concat", Kids: parts}
	if len(parts) > 0 {
		v.At = parts[0].At
	}
	return v
}

// Arithmetic is what + - * / or % gives of two whole numbers, as a shell works it
// out: what is no number counts as 0.
func Arithmetic(name string, a, b *Value, at place.Span) *Value {
	number := func(v *Value) *Value {
		return op("||", false, at, op("parseInt", false, at, v), number(0, at))
	}
	v := op(name, false, at, number(a), number(b))
	if name == "/" {
		v = op("parseInt", false, at, v)
	}
	return v
}

func op(name string, py bool, at place.Span, kids ...*Value) *Value {
	return &Value{Kind: Op, Text: name, Py: py, Kids: kids, At: at}
}

// Walk visits a value and all it is made of, each once.
func (v *Value) Walk(visit func(*Value)) {
	seen := map[*Value]bool{}
	var walk func(*Value)
	walk = func(v *Value) {
		if v == nil || seen[v] {
			return
		}
		seen[v] = true
		visit(v)
		for _, k := range v.Kids {
			walk(k)
		}
	}
	walk(v)
}

// Variables lists the environment variables in a value, each once, in the
// order in which they are met.
func (v *Value) Variables() []*Value {
	var list []*Value
	seen := map[string]bool{}
	v.Walk(func(k *Value) {
		if k.Kind == Env && !seen[k.Text] {
			seen[k.Text] = true
			list = append(list, k)
		}
	})
	return list
}

// Depends reports whether the value is decided by the environment or by
// something that is not known.
func (v *Value) Depends() bool {
	found := false
	v.Walk(func(k *Value) {
		switch k.Kind {
		case Env, EnvMap, Unknown, External, Func, Instance, Module, Class:
			found = true
		case Op:
			found = found || k.Text == "worker"
		}
	})
	return found
}

// Open reports whether a part of the value is not known. It is safe on nil.
func (v *Value) Open() bool {
	found := false
	v.Walk(func(k *Value) { found = found || k.Kind == Unknown || k.Kind == External })
	return found
}

// without is an object that has those of its keys for which a test of their
// value does not hold.
func (v *Value) without(test func(*Value) *Value) *Value {
	o := *v
	o.Kids = slices.Clone(v.Kids)
	for i, k := range o.Kids {
		if o.Keys[i] != "..." {
			o.Kids[i] = &Value{Kind: Cond, Py: true, At: k.At, Kids: []*Value{test(k), {Kind: Undef, Text: absent, At: k.At}, k}}
		}
	}
	return &o
}

// Merged is one object of the objects that conditions choose between: each
// property is what the one that is chosen has. Nil for all other values.
func (v *Value) Merged() *Value {
	if v.Kind != Cond && v.Kind != Op || v.choices(maxSides) >= maxSides {
		return nil
	}
	w := v.settled(0)
	if w == nil || w.Kind != Cond {
		return nil
	}
	return w.merged(0)
}

func (v *Value) merged(depth int) *Value {
	if v.Kind != Cond || depth > 12 {
		if v.Kind == Object {
			return v
		}
		return &Value{Kind: Object, At: v.At}
	}
	yes, no := v.Kids[1].merged(depth+1), v.Kids[2].merged(depth+1)
	if slices.Contains(yes.Keys, "...") || slices.Contains(no.Keys, "...") {
		return &Value{Kind: Object, At: v.At, Keys: []string{"..."}, Kids: []*Value{v}}
	}
	o := &Value{Kind: Object, At: v.At}
	o.choose(v.Kids[0], yes, no, v.Py)
	for i, k := range o.Keys {
		a, b := yes.Get(k), no.Get(k)
		for _, side := range []**Value{&a, &b} {
			if *side == nil {
				*side = &Value{Kind: Undef, Text: absent}
			}
		}
		o.Kids[i] = &Value{Kind: Cond, Py: v.Py, At: a.At, Kids: []*Value{v.Kids[0], a, b}}
	}
	return o
}

// folded is a value that no variable decides as the text that it is.
func (v *Value) folded() *Value {
	if (v.Kind == Op || v.Kind == Cond) && !v.Depends() {
		if o := v.Under(Environ{}); o.Kind == Str {
			return text(o.Text, v.At)
		}
	}
	return v
}

// Between how many values conditions may choose where something is asked of
// each of them, and where each addition doubles them: a hostile source makes
// each of forty choices one between the last and itself.
const (
	maxSides   = 256
	maxChoices = 32
)

// choices counts the values that conditions and fallbacks choose between, up to
// a limit.
func (v *Value) choices(limit int) int {
	var a, b *Value
	switch {
	case v.Kind == Cond && len(v.Kids) == 3:
		a, b = v.Kids[1], v.Kids[2]
	case v.Kind == Op && len(v.Kids) == 2 && (v.Text == "||" || v.Text == "??" || v.Text == "catch"):
		a, b = v.Kids[0], v.Kids[1]
	default:
		return 1
	}
	n := a.choices(limit)
	if n < limit {
		n += b.choices(limit - n)
	}
	return n
}

// Forks reports whether the value is another one in a process that the program
// makes.
func Forks(v *Value) bool {
	found := false
	v.Walk(func(k *Value) { found = found || k.Kind == Op && k.Text == "worker" })
	return found
}

// Trail gives the steps from the use of a value to where it is made, without
// repeating a line.
func (v *Value) Trail() []Step {
	var list []Step
	type line struct {
		file string
		n    int
	}
	seen := map[line]bool{}
	add := func(s Step) {
		k := line{s.At.File, s.At.Line}
		if s.At.Line > 0 && !seen[k] {
			seen[k] = true
			list = append(list, s)
		}
	}
	v.Walk(func(k *Value) {
		for _, s := range k.Steps {
			add(s)
		}
		if k.Kind == Env && !k.At.IsZero() {
			add(Step{k.At, "reads " + k.Text})
		}
	})
	return list
}

// with gives a copy of the value that knows one more step, taken before the
// others.
func (v *Value) with(s Step) *Value {
	c := *v
	c.Steps = append([]Step{s}, v.Steps...)
	return &c
}

// Get gives the value under a key of an object; nil where there is none.
func (v *Value) Get(key string) *Value {
	if v == nil || v.Kind != Object {
		return nil
	}
	for i := len(v.Keys) - 1; i >= 0; i-- {
		if v.Keys[i] == key {
			return v.Kids[i]
		}
		if v.Keys[i] != "..." {
			continue
		}
		// What is spread after a property takes its place where it has one.
		before := &Value{Kind: Object, Keys: v.Keys[:i], Kids: v.Kids[:i], At: v.At}
		switch from := v.Kids[i]; from.Kind {
		case EnvMap:
			set := &Value{Kind: Env, Text: key, Unset: from.Unset, At: from.At}
			if set.Unset == Raises {
				set.Unset = ReadsNull
			}
			if rest := before.Get(key); rest != nil {
				return &Value{Kind: Op, Text: "??", Kids: []*Value{set, rest}, At: from.At}
			}
			return set
		default:
			if before.Get(key) != nil {
				why := "a property that may come from " + from.String()
				if from.Kind == Unknown {
					why = from.Text
				}
				return &Value{Kind: Unknown, Text: why, At: from.At}
			}
			if from.Kind == Unknown { // it may hold anything
				return &Value{Kind: Unknown, Text: from.Text, At: from.At}
			}
			return nil
		}
	}
	return nil
}

// String shows a value in short, for messages; secrets are not for it.
func (v *Value) String() string {
	if v == nil {
		return "nothing"
	}
	switch v.Kind {
	case Str:
		return strconv.Quote(v.Text)
	case Num:
		return strconv.FormatFloat(v.Num, 'f', -1, 64)
	case Bool:
		return strconv.FormatBool(v.Num != 0)
	case Null:
		return "null"
	case Undef:
		return "undefined"
	case Env:
		return "$" + v.Text
	case External:
		return v.Text
	case Op:
		parts := make([]string, len(v.Kids))
		for i, k := range v.Kids {
			parts[i] = k.String()
		}
		return v.Text + "(" + strings.Join(parts, ", ") + ")"
	}
	return "…"
}

// Environ is an environment: names and values. With Open set, a name that is
// not in Set may be anything; else it is unset. Worker says that a process asks
// which another one of the program has made.
type Environ struct {
	Set    map[string]string
	Open   bool
	Worker bool
	Late   map[string]bool // those that the program itself sets when it is loaded
	Vague  map[string]bool // those that are set to what is not known
	Filled bool            // PHP puts the environment into $_ENV
	Seen   *Seen           // what is asked of it; nil where that is not noted
}

// Seen is what was asked of an environment. It may be nil: then nothing is noted.
type Seen struct {
	names map[string]bool
	all   bool // its names, or all of it
}

// Note notes that a variable was asked for.
func (s *Seen) Note(name string) {
	if s == nil || s.all || s.names[name] {
		return
	}
	if s.names == nil {
		s.names = map[string]bool{}
	}
	s.names[name] = true
}

// NoteAll notes that all of the environment was looked at.
func (s *Seen) NoteAll() {
	if s != nil {
		s.all = true
	}
}

// Same reports whether two environments say the same of what was asked.
func (s *Seen) Same(a, b Environ) bool {
	if s == nil || a.Open != b.Open || a.Worker != b.Worker || a.Filled != b.Filled {
		return false
	}
	if s.all {
		return maps.Equal(a.Set, b.Set) && maps.Equal(a.Late, b.Late) && maps.Equal(a.Vague, b.Vague)
	}
	for name := range s.names {
		x, inA := a.Set[name]
		y, inB := b.Set[name]
		if x != y || inA != inB || a.Late[name] != b.Late[name] || a.Vague[name] != b.Vague[name] {
			return false
		}
	}
	return true
}

// Early is the environment before the program is loaded.
func (e Environ) Early() Environ {
	if len(e.Late) == 0 {
		return e
	}
	m := make(map[string]string, len(e.Set))
	for k, v := range e.Set {
		if !e.Late[k] {
			m[k] = v
		}
	}
	return Environ{m, e.Open, e.Worker, nil, e.Vague, e.Filled, e.Seen}
}

// Lookup gives a variable; names are compared as Linux does.
func (e Environ) Lookup(name string, fold bool) (string, bool) {
	s, ok := e.Set[name]
	e.Seen.Note(name)
	if !ok && fold {
		e.Seen.NoteAll()
		keys := make([]string, 0, len(e.Set))
		for k := range e.Set {
			keys = append(keys, k)
		}
		sort.Strings(keys)
		for _, k := range keys {
			if strings.EqualFold(k, name) {
				return e.Set[k], true
			}
		}
	}
	return s, ok
}

// With gives the environment with more variables set.
func (e Environ) With(more map[string]string) Environ {
	m := make(map[string]string, len(e.Set)+len(more))
	for k, v := range e.Set {
		m[k] = v
	}
	for k, v := range more {
		m[k] = v
	}
	late := map[string]bool{}
	for k := range e.Late {
		if _, set := more[k]; !set {
			late[k] = true
		}
	}
	return Environ{m, e.Open, e.Worker, late, e.Vague, e.Filled, e.Seen}
}

// Without gives the environment without a variable; without a name, an empty one.
func (e Environ) Without(name string) Environ {
	m := map[string]string{}
	for k, v := range e.Set {
		if name != "" && k != name {
			m[k] = v
		}
	}
	return Environ{m, e.Open, e.Worker, e.Late, e.Vague, e.Filled, e.Seen}
}

// Without gives what a value comes to where some variables are certainly not set. It is
// safe on nil.
func (v *Value) Without(missing func(name string) bool) *Value {
	if v == nil {
		return nil
	}
	if v.Kind == Env && missing(v.Text) {
		c := &Value{Kind: Undef, At: v.At, Steps: v.Steps}
		switch v.Unset {
		case ReadsNull:
			c.Kind = Null
		case ReadsEmpty:
			c.Kind = Str
		case Raises:
			c = &Value{Kind: Env, Text: "\x00", Unset: Raises, At: v.At}
		}
		return c
	}
	if v.Kind == Op && v.Text == "isset" && len(v.Kids) == 1 && v.Kids[0].Kind == Env && missing(v.Kids[0].Text) {
		return &Value{Kind: Bool, At: v.At}
	}
	return v.rebuilt(func(k *Value) *Value { return k.Without(missing) })
}

// rebuilt is a value of other parts; it is itself where none is another.
func (v *Value) rebuilt(part func(*Value) *Value) *Value {
	changed := false
	kids := make([]*Value, len(v.Kids))
	for i, k := range v.Kids {
		kids[i] = part(k)
		changed = changed || kids[i] != k
	}
	if !changed {
		return v
	}
	c := *v
	c.Kids = kids
	return &c
}

// Substitute puts values in the place of variables; variables that are not
// named stay. It is safe on nil.
func (v *Value) Substitute(set map[string]*Value) *Value {
	return v.replace(set, func(v, s *Value) *Value { return s })
}

// Fallbacks gives variables a value that counts where the environment does not
// set them, as the ENV of an image does. It is safe on nil.
func (v *Value) Fallbacks(set map[string]*Value) *Value {
	return v.replace(set, func(v, s *Value) *Value { return op("unset", v.Py, s.At, v, s) })
}

func (v *Value) replace(set map[string]*Value, by func(v, s *Value) *Value) *Value {
	if v == nil || len(set) == 0 {
		return v
	}
	if v.Kind == Env {
		if s, ok := set[v.Text]; ok && s != nil {
			c := *by(v, s)
			c.Steps = append(append([]Step(nil), v.Steps...), Step{v.At, "reads " + v.Text})
			return c.with(Step{s.At, "sets " + v.Text})
		}
		return v
	}
	return v.rebuilt(func(k *Value) *Value { return k.replace(set, by) })
}

// Tail is the last parts of a dotted path: Tail("a.b.c", 2) is "b.c".
func Tail(path string, parts int) string {
	for i := len(path) - 1; i >= 0; i-- {
		if path[i] == '.' {
			if parts--; parts == 0 {
				return path[i+1:]
			}
		}
	}
	return path
}
