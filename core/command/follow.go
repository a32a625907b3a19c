package command

import (
	"path"
	"slices"
	"strings"

	"mvdan.cc/sh/v3/syntax"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// Script is a named command of a manifest.
type Script struct {
	Text string
	At   place.Span // of the text inside its quotes
	Vars []Assign   // what the package manager sets from the manifest's config
}

// Configured are the variables that a package manager sets for scripts from the
// config of a manifest (npm 11 documentation, "Scripts", "package.json vars").
func Configured(manifest *document.Node) (list []Assign) {
	manifest.Get("config").Walk(func(path []string, n *document.Node) {
		if text, ok := n.Scalar(); ok && len(path) > 0 {
			list = append(list, Assign{Name: "npm_package_config_" + strings.Join(path, "_"), Value: value.Text(text, n.At()), At: n.At()})
		}
	})
	return list
}

// Context is where a command is run.
type Context struct {
	Tree    *source.Tree
	Dir     string                                     // the folder it runs in, within the tree
	Scripts func(dir, name string) (Script, bool)      // package scripts
	InImage func(path string) (inTree string, ok bool) // paths inside an image, nil elsewhere
	// Workspace is the folder of a package of this workspace, by its name;
	// nil where there are none.
	Workspace func(name string) (dir string, ok bool)
	// With is the environment in which it is run; nil where none is given.
	With *value.Environ
	left *int // how many lines are followed yet
}

// Final is the program that ends up running.
type Final struct {
	Program  string // its name without folder
	Known    *Program
	Path     string // as named: may be a path
	Args     []Word
	read     bool // Outer is known
	Env      []Assign
	Outer    []Assign // of these, what was set before the shell read the words
	Dir      string
	At       place.Span // of the program's name
	Steps    []value.Step
	Via      string // the interpreter, for python -m NAME
	Manager  string // a process manager around it: nodemon, pm2
	Settings string // the file of the manager's that says what to start
	Wrapped  []Via  // programs on the way that must be there too
	Watching *Word  // a word that makes it watch, reload or open a debugger
	Fetched  bool   // npx and its like fetch it when it is not there
	Back     bool   // it is sent to the background, and nothing waits for it
	Holds    *Hold  // what stays between the host and it; nil where it takes the first process's place
	Direct   []Direct
	Exec     bool // no shell expands its words
	Else     bool // where it fails another program runs
	Missing  *Missing
	Reason   string // why it could not be followed further
	Either   bool   // a condition that cannot be told decides between it and another program
	Before   []Final
	Ends     string // why the shell ends before it comes to the program, in the environment of the context
	Needs    []Need // variables without which the shell ends before it
	Dotenv   []DotenvFile
}

// Need is a variable without which a shell ends: ${NAME:?}, or a test before exit.
type Need struct {
	Name string
	At   place.Span
}

// Via is a program on the way to the last one.
type Via struct {
	Name string
	At   place.Span
}

// Hold is a program that stays the first process, and so gets the signals of
// the host.
type Hold struct {
	Kind string // runner: a package manager; shell: of a line of several commands; script
	Name string
	At   place.Span
}

// Direct is a file of the tree that is run by its path, not given to an
// interpreter.
type Direct struct {
	File string // in the tree
	At   place.Span
	Exec bool // no shell runs it, so its first line must name an interpreter
}

// Missing is something on the way that is not there.
type Missing struct {
	Kind string // script, file
	Name string
	At   place.Span
}

const maxFollow = 12

// shipped is the text of a file of the tree that ships.
func (c Context) shipped(name string) (string, bool) {
	if c.Tree.State(name) != source.Shipped {
		return "", false
	}
	f, err := c.Tree.Code(name)
	if err != nil {
		return "", false
	}
	return strings.ReplaceAll(string(f.Data), "\r\n", "\n"), true
}

// Follow goes from a command line to the program that ends up running.
func Follow(line Line, c Context) Final {
	left := maxLines
	c.left = &left
	return follow(line, c, nil, nil, 0).optioned(c.With).inlined(c.With)
}

// inlined puts the text of a program that stands on the command line in its place, where the
// environment makes it.
func (f Final) inlined(with *value.Environ) Final {
	if f.Known == nil || with == nil || Inlines[f.Known.Name] == "" {
		return f
	}
	for i := 1; i < len(f.Args); i++ {
		if w := f.Args[i]; !w.Literal() && w.Value != nil && strings.Contains(Inlines[f.Known.Name], " "+f.Args[i-1].Text+" ") {
			if o := w.Value.Under(*with); o.Kind == value.Str {
				f.Args = slices.Clone(f.Args)
				f.Args[i].Value, f.Args[i].Text = value.Text(o.Text, w.At), o.Text
			}
		}
	}
	return f
}

// maxLines is how many command lines and scripts are followed from one: scripts that run
// themselves several times would double them at each step.
const maxLines = 200

// another reports whether one more line is followed.
func (c Context) another() bool {
	if c.left == nil {
		return true
	}
	*c.left--
	return *c.left >= 0
}

func follow(line Line, c Context, env []Assign, steps []value.Step, depth int) Final {
	if depth > maxFollow || !c.another() {
		return Final{Reason: "the command leads from script to script without an end", Steps: steps}
	}
	line = line.with(c)
	dir := c.Dir
	var finals []Final
	back, several := -1, 0
	waits := false
	var branch [][]int // of each of these
	var chosen []Simple
	var needs []Need
	ends := ""
	outer := env
	over := false // another program has taken the place of the shell
	for _, s := range line.Commands {
		if n := len(finals); s.Spare && n > 0 && finals[n-1].stays() && len(s.Words) > 0 && !builtin[s.Words[0].Text] { // only where that one fails
			finals[n-1].Else = true
			continue
		}
		s.Words = spreadUnder(s.Words, c.With)
		yes, sure := s.runs(c.With)
		if over || !yes {
			continue
		}
		needs = append(needs, s.needs()...)
		if sure && !s.Inner && c.With != nil && len(finals) == 0 && ends == "" {
			if s.raises(*c.With) {
				ends = "the shell ends: a variable that it insists on is not set"
			} else if len(s.Words) > 0 && s.Words[0].Text == "exit" {
				ends = "the script ends before it starts anything"
			}
			if ends != "" && (len(s.Words) == 0 || builtin[s.Words[0].Text]) { // what would follow is still of interest
				continue
			}
		}
		if len(s.Words) == 0 {
			env = append(env[:len(env):len(env)], s.Env...)
			continue
		}
		if keepsOpen(s) {
			waits = true
			if back >= 0 {
				continue // it only keeps the script alive
			}
		}
		if s.Words[0].Text == "unset" && sure && !s.Inner {
			env = append(env[:len(env):len(env)], unsets(s.Words[1:])...)
		}
		if builtin[s.Words[0].Text] && s.Words[0].Text != "cd" {
			over = sure && s.Words[0].Text == "exit" && !s.Inner
			continue
		}
		over = sure && s.takesOver() && !s.Inner
		several++
		if s.Words[0].Text == "cd" {
			for len(s.Words) > 2 && (s.Words[1].Text == "--" || s.Words[1].Text == "-P" || s.Words[1].Text == "-L") {
				s.Words = append(s.Words[:1:1], s.Words[2:]...)
			}
		}
		if s.Words[0].Text == "cd" && len(s.Words) > 1 && s.Words[1].Literal() {
			to := s.Words[1].Text
			if c.InImage != nil && strings.HasPrefix(to, "/") {
				if p, ok := c.InImage(to); ok {
					dir = p
				}
				continue
			}
			if p, ok := source.Join(dir, to); ok {
				dir = p
			}
			continue
		}
		sub := c
		sub.Dir = dir
		steps := steps
		if s.Handed {
			steps = append(steps[:len(steps):len(steps)], value.Step{At: s.At, Note: "hands over to its arguments"})
		}
		f := simple(s.Words, sub, append(env[:len(env):len(env)], s.Env...), steps, line.Exec, depth)
		if !f.read {
			f.Outer, f.read = outer, true
		}
		for i := range finals {
			if f.Program != finals[i].Program && finals[i].stays() && (alternatives(s.Branch, branch[i]) || c.With != nil && len(branch[i]) > 0 && chosen[i].takesOver()) {
				f.Either = true
				f.Reason = "a condition of the script decides whether " + finals[i].Program + " or " + f.Program + " runs"
				break
			}
		}
		branch, chosen = append(branch, s.Branch), append(chosen, s)
		f.Back = f.Back || s.Background
		if s.Background {
			back = len(finals)
		}
		finals = append(finals, f)
	}
	if len(finals) == 0 {
		why := "an empty command"
		if line.File != "" && len(line.Commands) > 0 {
			why = line.File + " comes to no program, called as it is here"
		}
		return Final{Reason: why, Steps: steps}
	}
	last := len(finals) - 1
	if back >= 0 && back > last {
		last = back
	}
	f := finals[last]
	f.Needs = append(needs, f.Needs...)
	if ends != "" {
		f.Ends = ends
	}
	if waits {
		f.Back = false
	}
	if entered := chosen[last].Words[0].Text == "exec"; !line.Exec && !entered && (several > 1 || chosen[last].Piped) {
		f.Holds = &Hold{"shell", "the shell of several commands", chosen[last].Words[0].At}
	} else if line.File != "" && !entered {
		f.Holds = &Hold{"script", line.File, chosen[last].Words[0].At}
	}
	f.Before = append(append([]Final(nil), finals[:last]...), f.Before...)
	return f
}

// unsets are the variables that unset takes away, by its words (POSIX.1-2024, "unset").
func unsets(words []Word) (list []Assign) {
	for _, w := range words {
		if w.Text == "-f" {
			return nil
		}
		if w.Literal() && syntax.ValidName(w.Text) {
			list = append(list, Assign{Name: w.Text, At: w.At, Gone: true})
		}
	}
	return list
}

// taken are the variables that flags of env take away (GNU Coreutils 9, "env").
func taken(flag Word, next []Word) (list []Assign) {
	name := ""
	switch t := flag.Text; {
	case t == "-i", t == "-", t == "--ignore-environment":
		return []Assign{{At: flag.At, Gone: true}}
	case (t == "-u" || t == "--unset") && len(next) > 0:
		name = next[0].Text
	case strings.HasPrefix(t, "--unset="):
		name = t[len("--unset="):]
	case strings.HasPrefix(t, "-u") && !strings.HasPrefix(t, "--"):
		name = t[2:]
	}
	if name == "" {
		return nil
	}
	return []Assign{{Name: name, At: flag.At, Gone: true}}
}

// literals are the variables of known text that a command sets for a shell.
func literals(env []Assign) map[string]*value.Value {
	m := map[string]*value.Value{}
	for _, a := range env {
		switch {
		case a.Gone && a.Name == "":
			clear(m)
		case !a.Gone && a.Value != nil && a.Value.Kind == value.Str:
			m[a.Name] = a.Value
		default:
			delete(m, a.Name)
		}
	}
	return m
}

// keepsOpen tells commands that stand at the end of a script so that it does
// not end: wait, tail -f, sleep infinity.
func keepsOpen(s Simple) bool {
	switch s.Words[0].Text {
	case "wait", "fg":
		return true
	case "tail":
		return len(s.Words) > 1 && strings.HasPrefix(s.Words[1].Text, "-") && strings.ContainsAny(s.Words[1].Text, "fF")
	case "sleep":
		return len(s.Words) > 1 && s.Words[1].Text == "infinity"
	}
	return false
}

// inits run a program as their child and hand the signals on (their
// documentation).
var inits = map[string]bool{"tini": true, "dumb-init": true, "catatonit": true}

// simple follows one simple command.
func simple(words []Word, c Context, env []Assign, steps []value.Step, exec bool, depth int) Final {
	if len(words) == 0 {
		return Final{Reason: "an empty command", Steps: steps}
	}
	w := words[0]
	f := Final{Path: w.Text, At: w.At, Args: words[1:], Env: env, Dir: c.Dir, Steps: steps, Exec: exec}
	if depth > maxFollow {
		f.Reason = "the command leads from script to script without an end"
		return f
	}
	if !w.Literal() {
		f.Reason = "the program is named by " + w.Text
		return f
	}
	name := Base(w.Text)
	f.Program = name
	if flags, ok := wrappers[name]; ok {
		return wrapped(name, flags, words, c, env, steps, exec, depth)
	}
	switch name {
	case "npm", "pnpm", "yarn", "bun":
		if g, ok := packageRun(name, words, c, env, steps, exec, depth); ok {
			return g
		}
	case "deno":
		if len(words) > 2 && words[1].Text == "task" { // a task is a script of deno.json
			run := append([]Word{{Value: value.Text("npm", w.At), Text: "npm", At: w.At}, {Value: value.Text("run", w.At), Text: "run", At: w.At}}, words[2:]...)
			if g, ok := packageRun("npm", run, c, env, steps, exec, depth); ok {
				return g
			}
		}
	case "composer":
		if g, ok := composer(words, c, env, steps, depth); ok {
			return g
		}
	case "make", "gmake":
		if g, ok := makeRun(words, c, env, steps, depth); ok {
			return g
		}
	case "bundle":
		if len(words) > 2 && words[1].Text == "exec" {
			return simple(words[2:], c, env, steps, exec, depth+1)
		}
	case "poetry", "pipenv", "uv", "pdm", "hatch", "rye":
		if i := index(words, "run"); i > 0 && i+1 < len(words) {
			rest := words[i+1:]
			for len(rest) > 1 && strings.HasPrefix(rest[0].Text, "-") && rest[0].Text != "-m" {
				rest = rest[1:]
			}
			if rest[0].Text == "-m" || strings.HasSuffix(rest[0].Text, ".py") {
				rest = append([]Word{{Value: value.Text("python", w.At), Text: "python", At: w.At}}, rest...)
			}
			return simple(rest, c, env, steps, exec, depth+1)
		}
	case "nodemon", "ts-node-dev":
		f.Known = Lookup(name)
		f.Manager = name
		if i := flagIndex(words, "--exec", "-x"); i > 0 {
			if line, err := Parse(words[i].Text, words[i].At); err == nil && len(line.Commands) > 0 {
				last := &line.Commands[len(line.Commands)-1]
				last.Words = append(last.Words, words[i+1:]...)
				g := follow(line, c, env, steps, depth+1)
				g.Manager, g.Wrapped = name, append(g.Wrapped, Via{name, w.At})
				return g
			}
		}
		return f
	case "pm2", "pm2-runtime", "forever":
		f.Manager = name
		f.Known = Lookup(name)
		if len(f.Args) > 0 && f.Args[0].Text == "start" {
			f.Args = f.Args[1:]
		}
		return f
	case "concurrently", "npm-run-all", "run-p", "run-s":
		if g, ok := together(name, words, c, env, steps, exec, depth); ok {
			return g
		}
		f.Known = Lookup(name)
		f.Reason = name + " starts several programs"
		return f
	}
	if handsOver[name] && len(words) > 1 {
		// The script of a base image, which is not in the tree.
		if p, ok := c.locate(w.Text); !ok || !c.Tree.Has(p) {
			return simple(words[1:], c, env, steps, exec, depth+1)
		}
	}
	if Shells[name] {
		return shell(words, c, env, steps, depth)
	}
	if strings.HasSuffix(name, ".sh") || strings.Contains(w.Text, "/") {
		if p, ok := c.locate(w.Text); ok && c.Tree.Has(p) && !inDependencies(p) {
			direct := Direct{p, w.At, exec}
			if g, ok := scriptFile(p, w, words[1:], c, env, steps, depth); ok {
				g.Direct = append(g.Direct, direct)
				return g
			}
			f.Direct = append(f.Direct, direct)
		} else if strings.HasPrefix(w.Text, "./") && Lookup(name) == nil || strings.HasSuffix(name, ".sh") || strings.HasSuffix(name, ".py") {
			f.Missing = &Missing{"file", w.Text, w.At}
			return f
		}
	}
	f.Known = Lookup(name)
	if f.Known != nil && f.Known.Name == "python" {
		return python(f)
	}
	if f.Known != nil {
		f.Watching = watching(f)
	}
	return f
}

func watching(f Final) *Word {
	for i, a := range f.Args {
		flag, _, _ := strings.Cut(a.Text, "=")
		if f.Known.WatchIn != "" && strings.HasPrefix(flag, "-") && strings.Contains(f.Known.WatchIn, " "+flag+" ") {
			return &f.Args[i]
		}
		if i == 0 && strings.Contains(f.Known.WatchOf, " "+a.Text+" ") {
			return &f.Args[i]
		}
		if f.Known.Target == FileTarget && !strings.HasPrefix(flag, "-") {
			if i == 0 && strings.Contains(f.Known.Verbs, " "+a.Text+" ") {
				continue
			}
			if i == 0 || !takesValue(f.Known, f.Args[i-1].Text) {
				break // what follows the file is for the program
			}
		}
	}
	return nil
}

// locate turns a path of the command into a path of the tree.
func (c Context) locate(p string) (string, bool) {
	if strings.HasPrefix(p, "/") {
		if c.InImage != nil {
			return c.InImage(p)
		}
		return "", false
	}
	return source.Join(c.Dir, p)
}

// Locate turns a path that the program is given into a path of the tree.
func (f Final) Locate(p string, c Context) (string, bool) {
	c.Dir = f.Dir
	return c.locate(p)
}

func index(words []Word, text string) int {
	for i, w := range words {
		if w.Text == text {
			return i
		}
	}
	return -1
}

// flagIndex gives the index of the value of a flag.
func flagIndex(words []Word, names ...string) int {
	for i, w := range words {
		for _, n := range names {
			if w.Text == n && i+1 < len(words) {
				return i + 1
			}
		}
	}
	return -1
}

func wrapped(name, flags string, words []Word, c Context, env []Assign, steps []value.Step, exec bool, depth int) Final {
	first := words[0]
	rest := words[1:]
	if flags == "\x02" { // everything up to -- is for the wrapper
		if i := index(rest, "--"); i >= 0 {
			rest = rest[i+1:]
		}
	} else {
		if flags == "\x01" && len(rest) > 0 {
			rest = rest[1:]
		}
		for len(rest) > 0 && strings.HasPrefix(rest[0].Text, "-") {
			if rest[0].Text == "--" {
				rest = rest[1:]
				break
			}
			if name == "npx" && rest[0].Text == "-c" && len(rest) > 1 {
				if line, err := Parse(rest[1].Text, rest[1].At); err == nil {
					return follow(line, c, env, steps, depth+1)
				}
			}
			if name == "env" {
				env = append(env[:len(env):len(env)], taken(rest[0], rest[1:])...)
			}
			n := 1
			if strings.Contains(flags, " "+rest[0].Text+" ") && len(rest) > 1 {
				n = 2
			}
			rest = rest[n:]
		}
		for len(rest) > 0 { // NAME=value before the command
			k, v, ok := strings.Cut(rest[0].Text, "=")
			if !ok || strings.HasPrefix(k, "-") || strings.ContainsAny(k, "/ ") || name == "npx" {
				break
			}
			val := dropPrefix(rest[0].Value, len(k)+1)
			if rest[0].Literal() {
				val = value.Text(v, rest[0].At)
			}
			env = append(env[:len(env):len(env)], Assign{Name: k, Value: val, At: rest[0].At})
			rest = rest[1:]
		}
	}
	if len(rest) == 0 {
		return Final{Program: name, Path: first.Text, At: first.At, Env: env, Dir: c.Dir, Steps: steps, Reason: name + " is given nothing to run"}
	}
	if name == "npx" || name == "bunx" {
		rest = append([]Word(nil), rest...)
		if i := strings.LastIndexByte(rest[0].Text, '@'); i > 0 { // npx serve@14
			rest[0].Text = rest[0].Text[:i]
			rest[0].Value = value.Text(rest[0].Text, rest[0].At)
		}
		if p := only(rest[0].Text); p != "" { // npx sirv-cli
			rest[0].Text = p
			rest[0].Value = value.Text(p, rest[0].At)
		}
	}
	if p := Lookup(name); name == "dotenv" && p != nil && index(words, "--") < 0 {
		rest = words[len(words)-len(rest):]
	}
	var files []DotenvFile
	if h, ok := handings[name]; ok {
		var set []Assign
		why := ""
		if files, set, rest, why = c.dotenv(h, words[1:len(words)-len(rest)], rest); why == "" && len(rest) == 0 {
			why = name + " is given nothing to run"
		}
		if why != "" {
			return Final{Program: name, Path: first.Text, At: first.At, Env: env, Dir: c.Dir, Steps: steps, Reason: why}
		}
		env = append(env[:len(env):len(env)], set...)
	}
	f := simple(rest, c, env, steps, exec, depth+1)
	f.Dotenv = append(files, f.Dotenv...)
	switch {
	case inits[name]:
		f.Holds = nil
	case name == "npx" || name == "bunx":
		f.Holds = &Hold{"runner", name, first.At}
	}
	f.Fetched = f.Fetched || name == "npx" || name == "bunx"
	if Lookup(name) != nil || name == "cross-env-shell" {
		f.Wrapped = append([]Via{{strings.TrimSuffix(name, "-shell"), first.At}}, f.Wrapped...)
	}
	return f
}

// started is the first word behind the flags of Bun that run a program.
func started(words []Word) string {
	flags := false
	for i := 0; i < len(words); i++ {
		switch t := words[i].Text; {
		case t == "--port" || t == "--env-file" || t == "--preload" || t == "-r":
			i++
			flags = true
		case strings.HasPrefix(t, "-"):
		case t == "run":
		case flags:
			return t
		default:
			return ""
		}
	}
	return ""
}

// packageRun follows npm start, npm run X, yarn X and their like.
func packageRun(name string, words []Word, c Context, env []Assign, steps []value.Step, exec bool, depth int) (Final, bool) {
	dir := c.Dir
	rest := words[1:]
	unknown := func(why string) (Final, bool) {
		return Final{Program: name, Path: words[0].Text, At: words[0].At, Env: env, Dir: c.Dir, Steps: steps, Reason: why}, true
	}
	if name == "bun" && strings.ContainsAny(started(rest), "./") {
		return Final{}, false // a file, not a script
	}
	// flags takes the flags of the package manager off the front, and keeps
	// the folder that they lead to.
	var lost string
	flags := func(rest []Word) []Word {
		for len(rest) > 0 && strings.HasPrefix(rest[0].Text, "-") && rest[0].Text != "--" {
			var to string
			var found bool
			if to, rest, found = c.elsewhere(name, dir, rest); found {
				dir = to
			} else if to != "" {
				lost = to
			}
		}
		return rest
	}
	if rest = flags(rest); len(rest) > 1 && name == "yarn" && rest[0].Text == "workspace" {
		to, ok := c.workspace(dir, rest[1].Text)
		if !ok {
			return unknown("no package of this workspace is named " + rest[1].Text)
		}
		dir, rest = to, rest[2:]
	}
	if len(rest) == 0 {
		return Final{}, false
	}
	script := ""
	args := rest[1:]
	word := rest[0]
	switch rest[0].Text {
	case "start", "test", "stop", "restart":
		script = rest[0].Text
	case "run", "run-script":
		if args = flags(args); len(args) == 0 {
			return Final{}, false
		}
		script, word, args = args[0].Text, args[0], args[1:]
	case "exec", "x", "dlx":
		for len(args) > 0 && strings.HasPrefix(args[0].Text, "-") {
			args = args[1:]
		}
		if len(args) > 0 {
			return simple(args, c, env, steps, exec, depth+1), true
		}
	case "install", "ci", "add", "i", "build":
		if name == "npm" || name == "pnpm" || name == "bun" {
			return Final{}, false
		}
		script = rest[0].Text
	default:
		if name == "npm" {
			return Final{}, false
		}
		script = rest[0].Text
	}
	// What follows the script is the script's own, but npm keeps what looks
	// like a flag for itself up to a lone -- (npm documentation, run-script).
	if name == "npm" {
		var own []Word
		for len(args) > 0 && args[0].Text != "--" {
			if strings.HasPrefix(args[0].Text, "-") {
				args = flags(args)
			} else {
				own, args = append(own, args[0]), args[1:]
			}
		}
		args = append(own, args...)
	}
	if lost != "" {
		return unknown("no package of this workspace is named " + lost)
	}
	sub := c
	sub.Dir = dir
	if c.Scripts == nil {
		return Final{}, false
	}
	s, ok := c.Scripts(dir, script)
	if !ok {
		if name == "bun" && strings.ContainsAny(script, "./") {
			return Final{}, false
		}
		if (name == "yarn" || name == "pnpm" || name == "bun") && Lookup(script) != nil {
			return simple(append([]Word{word}, args...), sub, env, steps, exec, depth+1), true
		}
		if script == "start" && name == "npm" && c.Tree.Has(path.Join(dir, "server.js")) {
			at := word.At
			node := []Word{{Value: value.Text("node", at), Text: "node", At: at}, {Value: value.Text("server.js", at), Text: "server.js", At: at}}
			return simple(node, sub, env, steps, exec, depth+1), true
		}
		f := Final{Program: name, Path: words[0].Text, At: words[0].At, Env: env, Dir: dir, Steps: steps}
		if script == "install" {
			return Final{}, false
		}
		f.Missing = &Missing{"script", script, word.At}
		return f, true
	}
	line, err := Parse(s.Text, s.At)
	if err != nil {
		return Final{Program: name, Path: words[0].Text, At: s.At, Dir: dir, Steps: steps, Reason: "the script " + script + " could not be read: " + err.Error()}, true
	}
	if i := index(args, "--"); i >= 0 {
		args = append(append([]Word(nil), args[:i]...), args[i+1:]...)
	}
	if n := len(line.Commands); n > 0 && len(args) > 0 && len(line.Commands[n-1].Words) == 0 { // variables alone: they are for what follows
		if with, err := Parse(s.Text+" :", s.At); err == nil && len(with.Commands) == n && len(with.Commands[n-1].Words) == 1 {
			with.Commands[n-1].Words = nil
			line = with
		}
	}
	if n := len(line.Commands); n > 0 && len(args) > 0 {
		line.Commands[n-1].Words = append(append([]Word(nil), line.Commands[n-1].Words...), args...)
	}
	env = append(env[:len(env):len(env)], s.Vars...)
	var before []Final
	if pre, ok := c.Scripts(dir, "pre"+script); ok && name != "pnpm" {
		if l, err := Parse(pre.Text, pre.At); err == nil {
			p := follow(l, sub, env, steps, depth+1)
			before = append(p.Before, p)
			before[len(before)-1].Before = nil
		}
	}
	steps = append(steps[:len(steps):len(steps)], value.Step{At: s.At, Note: "script " + script + ": " + s.Text})
	f := follow(line, sub, env, steps, depth+1)
	f.Before = append(before, f.Before...)
	f.Holds = &Hold{"runner", name, words[0].At}
	return f, true
}

// elsewhereFlags lead a package manager to another folder or to a package of
// the workspace (documentation of each, "workspaces" and "filtering", 2026).
var elsewhereFlags = map[string]string{
	"npm": " --prefix -C -w --workspace ", "pnpm": " -C --dir -F --filter ", "yarn": " --cwd ", "bun": " --cwd -F --filter ",
}

// elsewhere reads a flag of a package manager, with its value. Where the flag
// leads to another folder, that is found; a name that leads nowhere is given
// back without.
func (c Context) elsewhere(manager, dir string, words []Word) (to string, rest []Word, found bool) {
	flag, val, has := strings.Cut(words[0].Text, "=")
	rest = words[1:]
	if !strings.Contains(elsewhereFlags[manager], " "+flag+" ") {
		return "", rest, false
	}
	if !has {
		if len(rest) == 0 {
			return "", rest, false
		}
		val, rest = rest[0].Text, rest[1:]
	}
	if to, found = c.workspace(dir, val); !found {
		return val, rest, false
	}
	return to, rest, true
}

// workspace finds a package of the workspace by its folder or its name.
func (c Context) workspace(dir, name string) (string, bool) {
	if to, ok := source.Join(dir, name); ok && (to == "" || c.Tree.HasDir(to)) {
		return to, true
	}
	if c.Workspace != nil {
		return c.Workspace(strings.TrimSuffix(name, "...")) // with what it depends on
	}
	return "", false
}

// shell follows `sh FILE` and `sh -c COMMAND`.
func shell(words []Word, c Context, env []Assign, steps []value.Step, depth int) Final {
	f := Final{Program: Base(words[0].Text), Path: words[0].Text, At: words[0].At, Env: env, Dir: c.Dir, Steps: steps}
	for i := 1; i < len(words); i++ {
		w := words[i]
		if strings.HasPrefix(w.Text, "-") {
			if strings.HasSuffix(w.Text, "c") && !strings.HasPrefix(w.Text, "--") && i+1 < len(words) {
				cmd := words[i+1]
				text := cmd.Text
				at := cmd.At
				if cmd.Value != nil && cmd.Value.Kind == value.Str {
					text = cmd.Value.Text
				} else {
					text = strings.Trim(text, `"`)
				}
				line, err := parse(text, origin{at: at, vars: literals(env)})
				if err != nil {
					f.Reason = "the command could not be read: " + err.Error()
					return f
				}
				return follow(line, c, env, steps, depth+1)
			}
			continue
		}
		if p, ok := c.locate(w.Text); ok {
			if !c.Tree.Has(p) {
				f.Missing = &Missing{"file", w.Text, w.At}
				return f
			}
			if g, ok := scriptFile(p, w, words[i+1:], c, env, steps, depth); ok {
				return g
			}
		}
		break
	}
	f.Reason = "what the shell is given could not be read"
	return f
}

// scriptFile follows a shell script of the tree.
func scriptFile(p string, w Word, args []Word, c Context, env []Assign, steps []value.Step, depth int) (Final, bool) {
	if name := path.Base(p); fetchers[name] {
		tool := Word{Value: value.Text(name, w.At), Text: name, At: w.At}
		return simple(append([]Word{tool}, args...), c, env, steps, false, depth+1), true
	}
	file, err := c.Tree.Code(p)
	if err != nil {
		return Final{}, false
	}
	text := string(file.Data)
	first, _, _ := strings.Cut(text, "\n")
	if strings.HasPrefix(first, "#!") && !strings.Contains(first, "sh") {
		for _, in := range []string{"python", "node"} {
			if strings.Contains(first, in) {
				word := Word{Value: value.Text(in, w.At), Text: in, At: w.At}
				return simple(append([]Word{word, w}, args...), c, env, steps, false, depth+1), true
			}
		}
		return Final{}, false
	}
	if strings.IndexByte(text, 0) >= 0 {
		return Final{}, false
	}
	line, err := ParseFile(p, strings.ReplaceAll(text, "\r\n", "\n"), args, c.Dir, c.With, c.shipped, c.InImage != nil)
	if err != nil {
		return Final{Program: Base(p), Path: p, At: w.At, Dir: c.Dir, Steps: steps, Reason: p + " could not be read as a shell script: " + err.Error()}, true
	}
	// `exec "$@"` hands over to the arguments.
	if n := len(line.Commands); n > 0 && !(line.Other && c.With != nil) {
		last := line.Commands[n-1].Words
		if len(last) > 0 && strings.Contains(last[len(last)-1].Text, "$@") && len(args) > 0 {
			words := append(slices.Clone(last[:len(last)-1]), args...)
			f := simple(words, c, env, append(steps[:len(steps):len(steps)], value.Step{At: line.Commands[n-1].At, Note: "hands over to its arguments"}), false, depth+1)
			if last[0].Text != "exec" {
				f.Holds = &Hold{"script", p, line.Commands[n-1].At}
			}
			return f, true
		}
	}
	at := place.Span{File: p, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
	if n := len(line.Commands); n > 0 {
		at = line.Commands[n-1].At
	}
	steps = append(steps[:len(steps):len(steps)], value.Step{At: at, Note: "run by " + p})
	return follow(line, c, env, steps, depth+1), true
}

// inDependencies tells the programs of installed packages, which are known by
// their name.
func inDependencies(p string) bool {
	_, _, ok := source.DependencyPath(p)
	return ok
}

// python looks at what an interpreter is given: -m MODULE or a file.
func python(f Final) Final {
	for i := 0; i < len(f.Args); i++ {
		a := f.Args[i]
		switch {
		case a.Text == "-m" && i+1 < len(f.Args):
			m := f.Args[i+1]
			f.Via = f.Program
			f.Program, f.Path, f.At = m.Text, m.Text, m.At
			f.Known = module(m.Text)
			f.Args = f.Args[i+2:]
			if f.Known == nil {
				f.Args = append([]Word{m}, f.Args...)
			} else {
				f.Watching = watching(f)
			}
			return f
		case strings.HasPrefix(a.Text, "-"):
			if a.Text == "-W" || a.Text == "-X" {
				i++
			}
			if a.Text == "-c" {
				if f.Args = f.Args[i:]; len(f.Args) < 2 || !f.Args[1].Literal() {
					f.Reason = "a program on the command line"
				}
				return f
			}
		default:
			f.Args = f.Args[i:]
			return f
		}
	}
	f.Args = nil
	return f
}

// Inlines are the flags behind which a program stands itself (the manuals of python,
// node, bun, ruby and php, read 2026-11).
var Inlines = map[string]string{"python": " -c ", "node": " -e --eval -p --print -pe ", "bun": " -e --eval ", "ruby": " -e ", "php": " -r "}

// Inline is the program that stands on the command line itself, and what it is given.
func (f Final) Inline() (text Word, args []Word, ok bool) {
	if f.Known == nil || f.Reason != "" || f.Missing != nil {
		return Word{}, nil, false
	}
	for i, a := range f.Args {
		switch {
		case a.Text == "-run": // a library of Ruby that is such a program
			return Word{}, nil, false
		case strings.HasPrefix(a.Text, "-") && strings.Contains(Inlines[f.Known.Name], " "+a.Text+" ") && i+1 < len(f.Args) && f.Args[i+1].Literal():
			return f.Args[i+1], f.Args[i+2:], true
		case !strings.HasPrefix(a.Text, "-") && (i == 0 || !takesValue(f.Known, f.Args[i-1].Text)):
			return Word{}, nil, false
		}
	}
	return Word{}, nil, false
}

func takesValue(p *Program, flag string) bool {
	return strings.HasPrefix(flag, "-") && !strings.Contains(flag, "=") && strings.Contains(p.Values, " "+flag+" ")
}

// Flag gives the value of the last of the named flags: --flag value,
// --flag=value, -fvalue. missing is true when the flag ends the command.
func (f Final) Flag(names ...string) (w Word, ok, missing bool) {
	all := f.Flags(names...)
	if len(all) == 0 {
		return Word{}, false, false
	}
	w = all[len(all)-1]
	return w, true, w.Value == nil
}

// Flags gives the values of all occurrences of the named flags. A flag at the
// end of the command has no Value.
func (f Final) Flags(names ...string) []Word {
	var list []Word
	for i := 0; i < len(f.Args); i++ {
		a := f.Args[i]
		if a.Text == "--" {
			break
		}
		for _, n := range names {
			if a.Text == n {
				if i+1 < len(f.Args) {
					list = append(list, f.Args[i+1])
				} else {
					list = append(list, Word{At: a.At, Text: a.Text})
				}
				break
			}
			if strings.HasPrefix(n, "--") && strings.HasPrefix(a.Text, n+"=") || len(n) == 2 && n[0] == '-' && n[1] != '-' && len(a.Text) > 2 && strings.HasPrefix(a.Text, n) && !strings.HasPrefix(a.Text, "--") {
				cut := len(n)
				if strings.HasPrefix(n, "--") || a.Text[2] == '=' {
					cut = len(n)
					if a.Text[cut] == '=' {
						cut++
					}
				}
				w := a
				w.Text = a.Text[cut:]
				w.Value = dropPrefix(a.Value, cut)
				w.At.Col += len([]rune(a.Text[:cut]))
				w.Bare = false
				list = append(list, w)
				break
			}
		}
	}
	return list
}

// dropPrefix takes the first n bytes off a value that begins with text.
func dropPrefix(v *value.Value, n int) *value.Value {
	if v.Kind == value.Str {
		return value.Text(v.Text[min(n, len(v.Text)):], v.At)
	}
	if v.Kind == value.Op && v.Text == "concat" && len(v.Kids) > 0 && v.Kids[0].Kind == value.Str && len(v.Kids[0].Text) >= n {
		rest := append([]*value.Value(nil), v.Kids[1:]...)
		if head := v.Kids[0].Text[n:]; head != "" {
			rest = append([]*value.Value{value.Text(head, v.At)}, rest...)
		}
		return value.Concat(rest...)
	}
	return v
}

// Target gives the first argument that is neither a flag, the value of one,
// nor a word of the program's own such as run or start.
func (f Final) Target() (Word, bool) {
	free := f.Free()
	if len(free) > 0 && f.Known != nil && strings.Contains(f.Known.Verbs, " "+free[0].Text+" ") {
		free = free[1:]
	}
	if len(free) == 0 {
		return Word{}, false
	}
	return free[0], true
}

// Free gives the arguments that are neither flags nor their values.
func (f Final) Free() []Word {
	var list []Word
	for i := 0; i < len(f.Args); i++ {
		a := f.Args[i]
		if a.Text == "--" {
			return append(list, f.Args[i+1:]...)
		}
		if strings.HasPrefix(a.Text, "-") && len(a.Text) > 1 {
			if f.Known != nil && takesValue(f.Known, a.Text) {
				i++
			}
			continue
		}
		list = append(list, a)
		if f.Known != nil && len(list) == 1 && strings.Contains(f.Known.Verbs, " "+a.Text+" ") {
			continue
		}
		if f.Known != nil && f.Known.Target == FileTarget {
			return append(list, f.Args[i+1:]...) // the rest is for the file
		}
	}
	return list
}
