// Package trace goes through a program of JavaScript, Python, Go, Ruby, Java, PHP or
// Rust statement by statement under one environment, as an interpreter does, and notes the calls
// with what they are given. Nothing runs: what stands outside of the tree is
// not known, what the environment does not say is not there, and time does not
// pass. Where what is not known would decide the way, it gives up and says why.
//
// Package value says what an expression comes to under any environment; this
// one answers for the programs that make their values in ways that are not to be
// followed without going through them: loops, objects that change, functions
// that are handed over.
package trace

import (
	"bytes"
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
	"ubique/core/value"
)

// Call is a call of something outside of the tree.
type Call struct {
	Path   string // of what is called, as package value writes it
	Callee *value.Value
	At     place.Span
	Node   *code.Node
	File   *code.File
	Args   []*value.Value
	Keys   map[string]*value.Value
	Recv   *value.Value // the object whose method it is (Go); nil for none
}

// Result is what came of a program.
type Result struct {
	Calls []Call
	// Ended says that the program ended itself, or ended by an error that
	// nothing caught: with the reason.
	Ended string
	// Reason says why it was not followed to its end; empty where it was.
	Reason string
	// At is the statement where that is; none where it has no place.
	At place.Span
	// Undecided says that it was not followed further because what is not known
	// decides how it goes on; else it is this package that does not know how.
	Undecided bool
	// CalledBack says that functions ran that were handed what is not known.
	CalledBack bool
	// Waiting says that functions were handed to what is not followed, which
	// may call them.
	Waiting bool
	// Reads are the variables that it asks for by their names, in order.
	Reads []*value.Value
	// Forks says that the program makes processes of its own file.
	Forks bool
	// Launched are the programs that it started, as who goes through it notes them.
	Launched []any
	// Seen says what it asked of the environment: under another one that says the same
	// of that, the same comes of the program.
	Seen *value.Seen
}

// Limits: a hostile source makes loops without an end, and texts and lists that
// double.
const (
	maxSteps   = 60_000
	maxDepth   = 300
	maxText    = 1 << 16
	maxItems   = 1 << 13
	maxCalls   = 256
	maxReads   = 24
	maxUsed    = 1 << 24 // bytes and elements that are copied
	maxChanges = 16      // of its arguments by a program
	maxTurns   = 300     // of a loop, once the program listens
)

// Follows reports whether programs of a language are followed.
func Follows(l code.Language) bool {
	return javascript(l) || l == code.Python || l == code.Go || l == code.Ruby || l == code.Java || l == code.PHP || l == code.Rust
}

func javascript(l code.Language) bool {
	return l == code.JavaScript || l == code.TypeScript || l == code.JSX
}

// faulty is what comes of a program that this package could not go through.
func faulty() Result {
	r := Result{Reason: "a fault while it was followed", Seen: &value.Seen{}}
	r.Seen.NoteAll()
	return r
}

// Run goes through the program that begins with a file. Noted says which calls
// are kept, by their path, and whether the program stays in them.
func Run(e *value.Eval, main *code.File, env value.Environ, noted func(*value.Value) (note, stays bool)) (r Result) {
	defer func() { // the last net under what looks at hostile trees
		if fault := recover(); fault != nil {
			r = faulty()
		}
	}()
	return newMachine(e, main, env, noted).run(nil)
}

// Load goes through a file that a server loads, which is not the program itself: an
// application of Python, config.ru, a module whose export is served. Of the factories
// the first that is a function of the file without parameters that must be given is
// called then. Noted is as for Run.
func Load(e *value.Eval, main *code.File, env value.Environ, noted func(*value.Value) (note, stays bool), factories []string) (r Result) {
	defer func() {
		if fault := recover(); fault != nil {
			r = faulty()
		}
	}()
	m := newMachine(e, main, env, noted)
	m.imported = true
	return m.run(func() error {
		mod := m.modules[main.Name]
		for _, name := range factories {
			if mod == nil || mod.top.vars[name] == nil {
				continue
			}
			f, ok := mod.top.vars[name].v.(*function)
			if !ok || f.node == nil || f.node.Flag&code.Async != 0 {
				return nil
			}
			for _, p := range paramsOf(f.node.Kid(0)) {
				if p.Kid(0) == nil && p.Flag&code.Rest == 0 {
					return nil
				}
			}
			_, err := m.call(f, undefined, nil, nil, spot{main, f.node})
			return err
		}
		return nil
	})
}

// run goes through the program; then is what comes once its file has run.
func (m *machine) run(then func() error) (r Result) {
	e, main := m.e, m.main
	var err error
	switch main.Lang {
	case code.Go:
		err = m.runGo(main.Name)
	case code.Java:
		err = m.runJava(main.Name)
	case code.PHP:
		err = m.runPHP(main.Name)
	case code.Rust:
		err = m.runRust(main.Name)
	default:
		for _, name := range e.Before {
			if f := e.Loader.File(name); f != nil && f.Lang == main.Lang && err == nil {
				_, err = m.load(name)
			}
		}
		if err == nil {
			_, err = m.load(main.Name)
		}
	}
	err = m.survived(err)
	if err == nil && then != nil {
		err = then()
	}
	if err == nil && main.Lang == code.Ruby {
		err = m.rbEnd()
	}
	for err == nil && len(m.later) > 0 { // what was put off
		next := m.later[0]
		m.later = m.later[1:]
		_, err = m.ran(next.fn, next.args, next.at)
		err = m.survived(err)
	}
	if m.rejects {
		m.unhandled = nil
	}
	if err == nil && len(m.calls) == 0 && m.unhandled == nil {
		// It listens where something that is not followed calls back.
		m.calledBack = true
		for _, k := range m.kept {
			var args []any
			params := paramsOf(k.fn.(*function).node.Kid(0))
			for i, p := range params {
				v := any(dontKnow("what is handed to a function"))
				if i == 0 && (len(params) > 1 || failing[p.Name]) {
					v = nil // an error, which is not there
				}
				args = append(args, v)
			}
			if _, e := m.ran(k.fn, args, k.at); e != nil {
				if _, ok := e.(*exit); !ok {
					err = giveUp("a function that is called back: %s", e.Error())
				}
			}
		}
	}
	r = Result{CalledBack: m.calledBack, Calls: m.calls, Waiting: m.waiting, Forks: m.forks, Reads: m.reads, Seen: m.env.seen}
	switch err := err.(type) {
	case nil:
	case *exit:
		r.Ended = "the program ends itself"
		if err.stays || m.served && (len(m.calls) > 0 || m.launched > 0) {
			r.Ended = ""
		}
	case *thrown:
		r.ended(err, main.Lang)
	default:
		r.Reason = err.Error()
		if s, ok := err.(*stop); ok {
			r.Undecided, r.At = s.open, s.at
		}
	}
	if err == nil && m.daemons > 0 && m.keeping == 0 && !m.served && !m.waiting && !m.calledBack {
		r.Ended = "the program ends while only threads run that do not keep it"
	}
	if m.doubt != "" {
		r.Ended, r.Reason, r.Calls, r.Undecided = "", m.doubt, nil, true
	}
	if m.unhandled != nil && r.Ended == "" && r.Reason == "" && len(m.calls) == 0 {
		r.ended(m.unhandled, main.Lang)
	}
	return r
}

// survived hands an error that nothing catches to the function that the program has for
// that, after which it goes on (Node.js 24 API, "process", Event: 'uncaughtException').
func (m *machine) survived(err error) error {
	t, ok := err.(*thrown)
	if !ok || m.survives == nil {
		return err
	}
	_, err = m.call(m.survives, undefined, []any{t.v}, nil, spot{m.main, m.main.Body})
	return err
}

// endless are what programs of Python wait in until they are stopped, though they
// come back then (uvicorn 0.35, "Running programmatically"; Hypercorn 0.17, "API
// usage"; Python 3.14, "asyncio synchronization primitives", "Event loop", "signal"; Tornado 6.5, "tornado.ioloop"; Twisted 22.4, "Reactor Overview").
var endless = map[string]bool{"uvicorn.Server().run": true, "uvicorn.Server().serve": true, "hypercorn.asyncio.serve": true, "hypercorn.trio.serve": true,
	"tornado.ioloop.IOLoop.current().start": true, "tornado.ioloop.IOLoop.instance().start": true, "tornado.ioloop.IOLoop().start": true, "asyncio.get_event_loop().run_forever": true, "asyncio.new_event_loop().run_forever": true,
	"twisted.internet.reactor.run": true, "signal.pause": true, "threading.Event().wait": true, "asyncio.Event().wait": true, "anyio.sleep_forever": true, "trio.sleep_forever": true}

// slips are errors that a program rarely makes, and this package sooner, where
// it does not know what a value can do.
var slips = map[string]bool{"AttributeError": true, "TypeError": true, "IndexError": true, "NameError": true, "StopIteration": true}

func (r *Result) ended(err *thrown, l code.Language) {
	if o, ok := err.v.(*object); ok && o.class != nil && o.class.builtin && o.fault && (l == code.PHP && slipsPHP[o.class.name] || l == code.Ruby && slipsRuby(o)) {
		r.Reason = "an error while it was followed: " + err.String()
		return
	}
	if o, ok := err.v.(*object); ok && o.class != nil && o.class.builtin && slips[o.class.name] && o.fault {
		r.Reason = "an error while it was followed: " + err.String()
		return
	}
	r.Ended = "an error that nothing catches: " + err.String()
}

// slipsPHP are those of PHP, slipsRuby says which of Ruby are.
var slipsPHP = map[string]bool{"TypeError": true, "Error": true, "ArgumentCountError": true}

func slipsRuby(o *object) bool {
	msg, _ := o.get("message")
	switch text := show(msg); o.class.name {
	case "ArgumentError":
		return strings.HasPrefix(text, "wrong number") || strings.HasPrefix(text, "missing keyword")
	case "NameError", "LocalJumpError":
		return true
	}
	return false
}

// failing are names that a parameter has which holds what went wrong.
var failing = map[string]bool{"err": true, "error": true, "e": true, "ex": true, "er": true, "failure": true}

// Name is what a name at the top of a file of Python holds once the file has run;
// ok is false where that is not known.
func Name(e *value.Eval, f *code.File, env value.Environ, name string) (v *value.Value, ok bool) {
	m := newMachine(e, f, env, nil)
	mod, err := m.load(f.Name)
	if err != nil || mod.top.vars[name] == nil {
		return nil, false
	}
	x, err := m.read(mod.top.vars[name])
	if err != nil || !known(x) {
		return nil, false
	}
	return toValue(x, spot{f, f.Body}), true
}

func newMachine(e *value.Eval, main *code.File, env value.Environ, noted func(*value.Value) (note, stays bool)) *machine {
	if main.Lang == code.PHP { // what its libraries set is followed, in the arrays that they set
		env = env.Early()
	}
	m := &machine{e: e, main: main, env: variables{map[string]string{}, &value.Seen{}}, set: env, noted: noted, modules: map[string]*module{}, packages: map[string]*opaque{}, goPackages: map[string]*goPackage{}}
	for k, v := range env.Set {
		m.env.put(k, v)
	}
	m.set.Seen = m.env.seen
	return m
}

// machine is the state of one program.
type machine struct {
	e          *value.Eval
	main       *code.File
	env        variables
	set        value.Environ
	noted      func(*value.Value) (note, stays bool)
	modules    map[string]*module
	packages   map[string]*opaque
	nested     int              // how many processes it is in
	staysLater bool             // a context manager waits where it is left (Python)
	spawned    bool             // one that goes on runs beside it (Ruby)
	launched   int              // how many commands it has started
	started    map[*opaque]bool // commands of Go that were started, and whether they go on
	inThread   bool             // it is a thread of a program
	handedOn   any              // what that one is given
	making     []*class         // those that metaclasses make
	line       map[int]*list    // its arguments, from one on
	properties map[string]any   // of the virtual machine (Java)
	changes    int              // how often it did
	changed    *value.Eval      // package value with the arguments that it made of them

	goPackages    map[string]*goPackage
	goFlags       []*goFlagged
	onStart       []any              // what cobra runs before a command
	vipers        map[bool]*viper    // that of the package, and one that the program makes
	pins          kingpins           // what it describes to kingpin
	family        []*class           // the classes, in order (Python)
	provided      map[*class]*object // what Nest keeps, by class
	settings      *object            // what koanf holds
	nconf         *jsConf
	ruby          *rubyState
	java          *javaState
	php           *phpState
	rust          *rsState
	subjects      map[*code.Node]any // of cases
	patterns      map[string]*regexp.Regexp
	argvList      *list                   // the arguments as a list that changes (Ruby)
	options       map[*object][]*rbOption // of parsers of the command line (Ruby)
	daemons       int                     // threads that serve and do not keep the program (Python)
	keeping       int                     // threads that serve and keep it
	goSets        map[string]*goFlagSet   // the sets of flags of package flag (Go)
	imported      bool                    // the file is not the program itself: a server loads it
	serving       bool                    // a server is loading its application by name
	readIn        map[string]bool         // the packages and files that were read for what lambdas are for (Java)
	verbs         []verb                  // the commands of the command line of argparse
	parsers       []parser                // what parsers of the command line set by default
	asked         map[string]bool
	reads         []*value.Value
	calls         []Call
	later         []job
	kept          []job // functions that were handed to what is not followed
	unhandled     *thrown
	survives      any             // what is called for errors that nothing catches (Node.js)
	rejects       bool            // it has a function for those, or for promises that nobody waits for
	panicking     *goPanic        // what a deferred function of Go may stop
	onlyFields    bool            // data with other fields than the structure's is not taken (Go)
	frames        int             // of calls of Go
	marks         int             // how many symbols were made
	beyond        bool            // while such run, something from outside was called (Go)
	stayed        int             // how many functions of Go run beside the others, and stay there
	declaredNames map[string]bool // the names of functions and classes of the files that were read
	declaredOf    int             // how many those were
	calledBack    bool            // a function runs that is handed what is not known: the values may know it
	doubt         string          // a variable that it asked for, and that is not known
	yields        []*list         // what the generators that run have given
	phGiven       []*object       // and those of PHP
	label         string          // of the loop that comes next
	waiting       bool
	served        bool // it has waited for a server or for its own end
	forks         bool
	steps         int
	olds          int // how many values of Go were turned into others in one go
	level         int // how deep it is in what a value holds
	used          int // what was copied
	trying        int // how many try blocks it is in
	depth         int
}

type job struct {
	fn   any
	args []any
	at   spot
}

// spot is a node in a file.
type spot struct {
	f *code.File
	n *code.Node
}

func (s spot) span() place.Span { return s.f.At(s.n) }

// module is a file that was loaded.
type module struct {
	file    *code.File
	top     *scope
	exports *object // what it exports by name
	whole   any     // module.exports
}

// Errors that end what is being done.
type (
	// stop: what follows is not known; open where what is not known decides it.
	stop struct {
		why  string
		open bool
		over bool       // a limit is reached: nothing goes on after it
		at   place.Span // the statement in which it was found; none where it has no place
	}
	// exit: the program has ended, or stays in a call.
	exit struct{ stays bool }
	// thrown: an error of the program.
	thrown struct{ v any }
)

func (s *stop) Error() string { return s.why }

// placed notes the statement in which something could not be followed: the innermost.
func placed(err error, at func() place.Span) error {
	if s, ok := err.(*stop); ok && s.at.File == "" {
		w := *s
		w.at = at()
		return &w
	}
	return err
}
func (*exit) Error() string     { return "exit" }
func (t *thrown) Error() string { return t.String() }

func (t *thrown) String() string {
	if o, ok := t.v.(*object); ok {
		s := ""
		if o.class != nil {
			s = o.class.name
		}
		if msg, ok := o.get("message"); ok {
			if text, ok := msg.(string); ok {
				s += ": " + text
			}
		}
		return s
	}
	return fmt.Sprint(show(t.v))
}

func giveUp(format string, args ...any) error { return &stop{why: fmt.Sprintf(format, args...)} }

// spent is giveUp where a limit is reached.
func spent(why string) error { return &stop{why: why, over: true} }

// undecided is giveUp where what is not known decides how the program goes on.
func undecided(format string, args ...any) error {
	return &stop{why: fmt.Sprintf(format, args...), open: true}
}

// raise makes an error of a class of the language.
func raise(class, message string) error {
	o := newObject()
	o.class = errorClass(class)
	o.set("message", message)
	o.set("name", class)
	o.fault = true
	return &thrown{o}
}

// madeError is an error that the program makes itself.
func madeError(class, message string) *object {
	o := raise(class, message).(*thrown).v.(*object)
	o.fault = false
	return o
}

// certainly is an error that is the program's own, whatever this package knows of
// what it works with.
func certainly(class, message string) error { return &thrown{v: madeError(class, message)} }

// errorClass is a class of errors that the language has: all come from Exception
// and Error.
func errorClass(name string) *class {
	return &class{name: name, builtin: true, statics: newObject(), methods: newObject()}
}

// lookup gives a variable of the environment, and notes that it was asked for.
func (m *machine) lookup(name string, at spot) (string, bool) {
	v, ok := m.env.get(name)
	if !ok && strings.HasPrefix(name, "npm_") && !strings.HasPrefix(name, "npm_package_config_") && m.doubt == "" && m.e.Packaged {
		m.doubt = "the variable " + name + ", which the package manager sets"
	}
	m.vague(name)
	if !m.asked[name] && len(m.reads) < maxReads {
		if m.asked == nil {
			m.asked = map[string]bool{}
		}
		m.asked[name] = true
		m.reads = append(m.reads, value.Variable(name, value.ReadsUndef, at.span()))
	}
	return v, ok
}

// vague notes that a variable was asked for which is set to what is not known.
func (m *machine) vague(name string) {
	if m.set.Vague[name] && m.doubt == "" {
		m.doubt = "the variable " + name + ", which is set to what is not known"
	}
}

// step counts; a program without an end is given up.
func (m *machine) step() error {
	if m.steps++; m.steps > maxSteps {
		return spent("it takes too many steps to follow")
	}
	if m.used > maxUsed {
		return spent("it takes too much to follow")
	}
	return nil
}

// use counts what is copied: elements and bytes.
func (m *machine) use(n int) error {
	if m.used += n; m.used > maxUsed {
		return spent("it takes too much to follow")
	}
	return nil
}

// load runs a file of the tree once.
func (m *machine) load(path string) (*module, error) {
	key := path
	if path == m.main.Name && m.main.Lang == code.Python && !m.imported && m.modules[path] != nil {
		key = "\x00" + path // what runs as __main__ is another module than what is imported by its name
	}
	if mod := m.modules[key]; mod != nil {
		return mod, nil
	}
	f := m.e.Loader.File(path)
	if f == nil || f.Body == nil || !Follows(f.Lang) {
		return nil, giveUp("%s could not be read", path)
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("files that load each other without end")
	}
	defer func() { m.depth-- }()
	if f.Lang == code.Python && (path != m.main.Name || m.imported || strings.HasSuffix(path, "/__main__.py")) { // the packages around it first
		for i := range len(path) {
			if init := path[:i] + "/__init__.py"; path[i] == '/' && init != path && m.modules[init] == nil && m.e.Loader.File(init) != nil {
				if _, err := m.load(init); err != nil {
					return nil, err
				}
				if mod := m.modules[path]; mod != nil { // by them
					return mod, nil
				}
			}
		}
	}
	mod := &module{file: f, exports: newObject()}
	m.modules[key] = mod
	mod.top = &scope{vars: map[string]*cell{}, module: mod, static: f.Top, this: undefined}
	if javascript(f.Lang) {
		if err := m.otherModules(f); err != nil {
			return nil, err
		}
		whole := newObject()
		mod.whole = whole
		holder := newObject()
		holder.set("exports", whole)
		mod.top.declare("module", holder)
		mod.top.declare("exports", whole)
		mod.top.this = whole
		err := m.block(f.Body.Kids, mod.top)
		if v, ok := holder.get("exports"); ok {
			mod.whole = v
		}
		if err != nil {
			return mod, flat(err)
		}
		return mod, nil
	}
	name := "imported"
	if key == m.main.Name && !m.imported {
		name = "__main__"
	}
	mod.top.declare("__name__", name)
	mod.top.declare("__file__", root+"/"+path)
	if f.Lang == code.Python { // what the first statement says
		var doc any
		if b := f.Body; b != nil && len(b.Kids) > 0 && b.Kids[0].Is(code.ExprStmt) && b.Kids[0].Kid(0).Is(code.String) {
			doc = b.Kids[0].Kids[0].Name
		}
		mod.top.declare("__doc__", doc)
	}
	if dir, ok := strings.CutSuffix(path, "/__init__.py"); ok {
		mod.top.declare("__path__", &list{items: []any{root + "/" + dir}})
	}
	return mod, flat(m.block(f.Body.Kids, mod.top))
}

// flat is an error of a file: a return at its top ends it.
func flat(err error) error {
	if _, ok := err.(*leave); ok {
		return nil
	}
	return err
}

// imports binds what an import names.
func (m *machine) imports(n *code.Node, s *scope) error {
	f := s.module.file
	if n.Flag&code.TypeOnly != 0 {
		return nil
	}
	if javascript(f.Lang) {
		return m.jsImport(n, s)
	}
	return m.pyImport(n, s)
}

func (m *machine) jsImport(n *code.Node, s *scope) error {
	f := s.module.file
	path, ok := m.e.Loader.Resolve(f, n.Name, "")
	exported := n.Flag&code.Exported != 0
	if !ok {
		name := strings.TrimPrefix(n.Name, "node:")
		for _, k := range n.Kids {
			v, err := m.opaqueKey(m.package1(name), k.Name)
			if k.Name == "*" || k.Name == "default" || err != nil {
				v = m.package1(name)
			}
			if exported {
				s.module.exports.set(k.Alias, v)
			} else {
				s.declare(k.Alias, v)
			}
		}
		return nil
	}
	if d := m.data(path); d != nil {
		for _, k := range n.Kids {
			v := any(d)
			if o, ok := v.(*object); ok && k.Name != "default" && k.Name != "*" {
				v, _ = o.get(k.Name)
			}
			s.declare(k.Alias, v)
		}
		return nil
	}
	mod, err := m.load(path)
	if err != nil {
		return err
	}
	for _, k := range n.Kids {
		link := &cell{from: mod, name: k.Name}
		switch {
		case exported && k.Name == "*" && k.Alias == "":
			for _, name := range mod.exports.keys {
				if name != "default" {
					s.module.exports.link(name, &cell{from: mod, name: name})
				}
			}
		case exported:
			s.module.exports.link(k.Alias, link)
		default:
			s.vars[k.Alias] = link
		}
	}
	return nil
}

// taken is what a module of JavaScript gives under a name.
func (m *machine) taken(mod *module, name string) (any, error) {
	switch name {
	case "*":
		o := newObject()
		for _, k := range mod.exports.keys {
			v, err := m.taken(mod, k)
			if err != nil {
				return nil, err
			}
			o.set(k, v)
		}
		if w, ok := mod.whole.(*object); ok && len(mod.exports.keys) == 0 {
			return w, nil
		}
		if _, fn := mod.whole.(*object); !fn && len(mod.exports.keys) == 0 {
			return mod.whole, nil
		}
		return o, nil
	case "default":
		if c := mod.exports.cells[name]; c != nil {
			return m.read(c)
		}
		return mod.whole, nil
	}
	if c := mod.exports.cells[name]; c != nil {
		return m.read(c)
	}
	if w, ok := mod.whole.(*object); ok {
		if v, ok := w.get(name); ok {
			return v, nil
		}
	}
	if w, ok := mod.whole.(*function); ok && w.props != nil {
		if v, ok := w.props.get(name); ok {
			return v, nil
		}
	}
	if of := mod.file; (of.Lang == code.JavaScript || of.Lang == code.JSX) && len(mod.exports.keys) > 0 && !bytes.Contains(of.Src, []byte("export *")) && !bytes.Contains(of.Src, []byte("exports.")) {
		return nil, certainly("SyntaxError", "the module '"+of.Name+"' does not provide an export named '"+name+"'")
	}
	return nil, giveUp("%s is not found in %s", name, mod.file.Name)
}

// data is a file of data of the tree; nil where it is none.
func (m *machine) data(path string) any {
	d := m.e.Loader.Data(path)
	if d == nil {
		return nil
	}
	v, err := m.fromValue(value.FromDocument(d), 0)
	if err != nil {
		return nil
	}
	return v
}

// validJSON reports whether a file is JSON, strictly, or has another ending.
func (m *machine) validJSON(path string) bool {
	if !strings.HasSuffix(path, ".json") {
		return true
	}
	t, ok := m.e.Loader.Text(path)
	return !ok || json.Valid([]byte(strings.TrimPrefix(t, "\ufeff")))
}

// require is what require of a name gives.
func (m *machine) require(name string, s *scope) (any, error) {
	f := s.module.file
	path, ok := m.e.Loader.Resolve(f, name, "")
	if !ok && m.trying > 0 && (strings.HasPrefix(name, "./") || strings.HasPrefix(name, "../")) {
		// A file of the tree's own that may be there or not. Source: the manual of
		// Node.js, "Errors", MODULE_NOT_FOUND, read 2026-11.
		err := raise("Error", "Cannot find module '"+name+"'")
		err.(*thrown).v.(*object).set("code", "MODULE_NOT_FOUND")
		return nil, err
	}
	if !ok {
		return m.package1(strings.TrimPrefix(name, "node:")), nil
	}
	if !m.validJSON(path) {
		return nil, certainly("SyntaxError", path+" is no JSON")
	}
	if d := m.data(path); d != nil {
		return d, nil
	}
	mod, err := m.load(path)
	if err != nil {
		return nil, err
	}
	if len(mod.exports.keys) > 0 {
		return m.taken(mod, "*")
	}
	return mod.whole, nil
}

// ownModule reports whether a module of Python that is nowhere in the tree can only be
// a file of one machine, which programs take in where it is there: local_settings.
func ownModule(name string) bool {
	top, _, _ := strings.Cut(name, ".")
	for _, w := range strings.Split(strings.ToLower(top), "_") {
		switch w {
		case "local", "private", "secret", "secrets", "override", "overrides":
			return true
		}
	}
	return false
}

// open reports whether a module of Python may have names that do not stand in it.
func open(f *code.File) bool {
	for _, w := range []string{"import *", "__getattr__", "globals()", "setattr(", "vars()", "__dict__", "exec(", "sys.modules", "locals()"} {
		if bytes.Contains(f.Src, []byte(w)) {
			return true
		}
	}
	return false
}

// reached reports whether a file of the program may set names of another module in a way
// that is not followed.
func (m *machine) reached() bool {
	return slices.ContainsFunc(m.e.Loader.Loaded(), func(f *code.File) bool {
		return f.Lang == code.Python && (bytes.Contains(f.Src, []byte("vars(")) || bytes.Contains(f.Src, []byte("__dict__")) || bytes.Contains(f.Src, []byte("exec(")))
	})
}

func (m *machine) pyImport(n *code.Node, s *scope) error {
	f := s.module.file
	if m.trying > 0 && ownModule(strings.TrimLeft(n.Name, ".")) {
		if _, ok := m.e.Loader.Resolve(f, n.Name, ""); !ok {
			return raise("ModuleNotFoundError", "No module named '"+n.Name+"'")
		}
	}
	if len(n.Kids) == 1 && n.Kids[0].Name == "*" && n.Kids[0].Flag&code.Star == 0 { // import a.b, import a.b as c
		k := n.Kids[0]
		name := n.Name
		if k.Flag&code.TopName != 0 {
			if path, ok := m.e.Loader.Resolve(f, n.Name, ""); ok { // all of it is loaded
				if _, err := m.load(path); err != nil {
					return err
				}
			}
			name = k.Alias
		}
		v, err := m.pyModule(name, f)
		if err != nil {
			return err
		}
		s.declare(k.Alias, v)
		return nil
	}
	for _, k := range n.Kids {
		if k.Flag&code.Star != 0 {
			path, ok := m.e.Loader.Resolve(f, n.Name, "")
			if !ok { // names of a package, which are looked for where they are used
				continue
			}
			mod, err := m.load(path)
			if err != nil {
				return err
			}
			for name, c := range mod.top.vars {
				if !strings.HasPrefix(name, "_") {
					s.vars[name] = c
				}
			}
			continue
		}
		if path, ok := m.e.Loader.Resolve(f, n.Name, k.Name); ok {
			mod, err := m.load(path)
			if err != nil {
				return err
			}
			if c := mod.top.vars[k.Name]; c != nil {
				s.vars[k.Alias] = &cell{v: c.v}
				continue
			}
		}
		sub := n.Name + "." + k.Name
		if strings.HasSuffix(n.Name, ".") {
			sub = n.Name + k.Name
		}
		if path, ok := m.e.Loader.Resolve(f, sub, ""); ok {
			mod, err := m.load(path)
			if err != nil {
				return err
			}
			s.declare(k.Alias, mod)
			continue
		}
		if path, ok := m.e.Loader.Resolve(f, n.Name, k.Name); ok {
			if of := m.e.Loader.File(path); of != nil && of.Lang == code.Python && !open(of) {
				return certainly("ImportError", "cannot import name '"+k.Name+"' from '"+n.Name+"'")
			}
			return giveUp("%s is not found in %s", k.Name, n.Name)
		}
		s.declare(k.Alias, m.outside(n.Name+"."+k.Name))
	}
	return nil
}

func (m *machine) pyModule(name string, f *code.File) (any, error) {
	path, ok := m.e.Loader.Resolve(f, name, "")
	if !ok {
		return m.outside(name), nil
	}
	return m.load(path)
}

// outside is something of a package or of the language.
func (m *machine) outside(path string) any {
	switch path {
	case "os.environ":
		return &envMap{}
	case "sys.argv":
		return m.commandLine(0)
	}
	return m.package1(path)
}

// package1 is the one thing outside of the tree that has a path.
func (m *machine) package1(path string) *opaque {
	o := m.packages[path]
	if o == nil {
		o = &opaque{path: path}
		m.packages[path] = o
	}
	return o
}
