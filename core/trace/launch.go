package trace

import (
	"maps"
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/value"
)

// Commands that a program starts, in its own place or beside itself: what they start is
// for package survey to say (POSIX.1-2024, "exec", "system"; Python 3.14, os, subprocess;
// Node.js 24, "Child process"; Deno 2.9, Deno.Command; Bun 1.4, "Spawn"; Ruby 3.4, Kernel,
// Process; PHP manual, "Program execution Functions", "PCNTL"; Go 1.26, os/exec, syscall;
// Java SE 25, ProcessBuilder, Runtime).

// maxLaunches is how many commands of one program are looked at.
const maxLaunches = 8

// launch is a command as the program gives it.
type launch struct {
	words    []any // nil where a shell reads the line
	line     any
	dir, env any // nil: those of the program
	waits    bool
	instead  bool // it takes the place of the program
}

// interpreters are what the runtimes call their own program, and the word for that.
var interpreters = map[string]string{"sys.executable": "python", "process.execPath": "node", "process.argv0": "node", "RbConfig.ruby": "ruby", "RbConfig.ruby()": "ruby", "PHP_BINARY": "php", "Deno.execPath()": "deno"}

// launching are the last names of the calls that start a command, by language: those that
// are followed here.
var launching = map[code.Language]map[string]bool{
	code.JavaScript: words("spawn spawnSync execSync execFile execFileSync execa execaSync Command"),
	code.Python:     words("system popen Popen check_call check_output create_subprocess_exec create_subprocess_shell execv execve execvp execvpe execl execle execlp execlpe"),
	code.Ruby:       words("exec system spawn"),
	code.PHP:        words("passthru system exec shell_exec proc_open popen pcntl_exec"),
	code.Go:         words("Command CommandContext Exec"),
	code.Java:       words("ProcessBuilder exec"),
	code.Rust:       words("Command"),
}

// launchers are the modules of which a file may call exec, run or call.
var launchers = words("child_process node:child_process subprocess")

// Launches reports whether the files of a program call what starts a command: only then is it
// worth while to go through it for that.
func Launches(files []*code.File) bool {
	for _, f := range files {
		lang := f.Lang
		if lang == code.TypeScript || lang == code.JSX {
			lang = code.JavaScript
		}
		names := launching[lang]
		if names == nil {
			continue
		}
		if slices.ContainsFunc(f.Imports, func(i code.Site) bool { return launchers[i.Node.Name] }) {
			return true
		}
		for _, c := range f.Calls {
			callee := c.Node.Kid(0)
			switch {
			case callee.Is(code.Name) || callee.Is(code.Member):
				if names[callee.Name] || lang == code.Rust && callee.Name == "new" && strings.HasSuffix(callee.Kid(0).Dotted(), "Command") {
					return true
				}
			}
		}
	}
	return false
}

// launches tells of a command; stays says that what it starts goes on running. The error
// ends the program, or stays in the call.
func (m *machine) launches(l launch, at spot) (stays bool, err error) {
	if m.e.Launch == nil || m.launched >= maxLaunches {
		return false, nil
	}
	out := value.Launch{At: at.span(), Dir: m.e.Dir, Waits: l.waits || l.instead}
	switch d := l.dir.(type) {
	case nil, undef:
	case *opaque:
		return false, nil
	default:
		p, ok := m.treePath(strings.TrimSuffix(pathText(d), "/") + "/")
		if !ok {
			return false, nil
		}
		if out.Dir = path.Clean(p); out.Dir == "." {
			out.Dir = ""
		}
	}
	if l.words != nil {
		if len(l.words) == 0 {
			return false, nil
		}
		for _, w := range l.words {
			if o, ok := w.(*opaque); ok && interpreters[o.path] != "" {
				w = interpreters[o.path]
			}
			switch x := w.(type) {
			case integer, float64:
				w = show(x)
			case pyPath:
				w = string(x)
			}
			if t, ok := w.(string); ok {
				w = fromRoot(t, out.Dir)
			}
			out.Words = append(out.Words, toValue(w, at))
		}
		if out.Words[0].Kind != value.Str || out.Words[0].Text == "" {
			return false, nil
		}
	} else {
		line, _ := l.line.(string)
		if out.Line = fromRoot(line, out.Dir); strings.TrimSpace(line) == "" {
			return false, nil
		}
	}
	switch e := l.env.(type) {
	case nil, undef, *envMap:
		out.Env = maps.Clone(m.env.all())
	case *object:
		out.Env = map[string]string{}
		for _, k := range e.keys {
			switch v := e.cells[k].v.(type) {
			case undef, nil:
			case *opaque:
				return false, nil
			default:
				out.Env[k] = show(v)
			}
		}
	default:
		return false, nil
	}
	m.launched++
	stays = m.e.Launch(out)
	m.served = m.served || stays && out.Waits
	if l.instead || stays && l.waits {
		return stays, &exit{stays: true}
	}
	return stays, nil
}

// fromRoot is a text with paths from the root of the tree as ones from a folder of it.
func fromRoot(text, dir string) string {
	if !strings.Contains(text, root) {
		return text
	}
	way := "./"
	if dir != "" {
		way = strings.Repeat("../", strings.Count(dir, "/")+1)
	}
	if text = strings.ReplaceAll(text, root+"/", way); text == root {
		return way
	}
	return text
}

// process is what a program holds of another that it has started: what waits for its end
// does not come back where that goes on running.
func (m *machine) process(stays bool, waiting string, done any) *object {
	o := newObject()
	o.class = &class{name: "Process", builtin: true, methods: newObject(), statics: newObject()}
	for _, name := range strings.Fields(waiting) {
		o.class.methods.set(name, &function{name: name, native: func(*machine, any, []any, map[string]any, spot) (any, error) {
			if stays {
				return nil, &exit{stays: true}
			}
			return done, nil
		}})
	}
	return o
}

// quiet gives what a program holds of another methods that do nothing but give a value.
func (o *object) quiet(v func() any, names ...string) {
	for _, name := range names {
		o.class.methods.set(name, &function{name: name, native: func(*machine, any, []any, map[string]any, spot) (any, error) { return v(), nil }})
	}
}

// pyLaunches are the calls of Python that start a command; done is false for any other.
func (m *machine) pyLaunches(call string, args []any, keys map[string]any, at spot) (v any, done bool, err error) {
	arg := func(i int, name string) any {
		if i < len(args) && i >= 0 {
			return args[i]
		}
		return keys[name]
	}
	words := func(x any) []any {
		if l, ok := x.(*list); ok {
			return append([]any{}, l.items...)
		}
		return nil
	}
	of, name, _ := strings.Cut(call, ".")
	switch {
	case call == "os.system" || call == "os.popen":
		_, err = m.launches(launch{line: arg(0, "command"), waits: call == "os.system"}, at)
		if call == "os.popen" {
			return dontKnow("what a command prints"), true, err
		}
		return integer(0), true, err
	case of == "os" && strings.HasPrefix(name, "exec") && len(args) > 0:
		l := launch{instead: true}
		given := args[1:]
		if strings.HasSuffix(name, "e") && len(given) > 0 {
			l.env, given = given[len(given)-1], given[:len(given)-1]
		}
		if l.words = given; strings.HasPrefix(name, "execv") {
			l.words = nil
			if len(given) > 0 {
				l.words = words(given[0])
			}
		}
		if len(l.words) == 0 {
			return nil, true, giveUp("another program that is started")
		}
		l.words = append([]any{args[0]}, l.words[1:]...)
		if _, err = m.launches(l, at); err == nil {
			err = giveUp("another program that is started")
		}
		return nil, true, err
	case of == "subprocess" && (name == "run" || name == "call" || name == "check_call" || name == "check_output" || name == "Popen"):
		given := arg(0, "args")
		l := launch{words: words(given), dir: keys["cwd"], env: keys["env"], waits: name != "Popen"}
		if yes, _ := truth(keys["shell"], true); yes || l.words == nil {
			if len(l.words) > 0 {
				given = l.words[0]
			}
			l.words, l.line = nil, given
			if p, ok := given.(pyPath); ok {
				l.line = string(p)
			}
		}
		stays, err := m.launches(l, at)
		switch name {
		case "call", "check_call":
			return integer(0), true, err
		case "Popen":
			o := m.process(stays, "wait communicate __exit__", integer(0))
			o.class.methods.set("__enter__", &function{name: "__enter__", native: func(*machine, any, []any, map[string]any, spot) (any, error) { return o, nil }})
			o.quiet(func() any {
				if stays {
					return nil
				}
				return integer(0)
			}, "poll")
			o.quiet(func() any { return nil }, "terminate", "kill", "send_signal")
			for _, k := range []string{"pid", "stdout", "stderr", "stdin"} {
				o.set(k, dontKnow("a process of its own"))
			}
			return o, true, err
		case "run":
			o := newObject()
			o.class = &class{name: "CompletedProcess", builtin: true, methods: newObject(), statics: newObject()}
			o.set("returncode", integer(0))
			o.set("stdout", dontKnow("what a command prints"))
			o.set("stderr", dontKnow("what a command prints"))
			o.quiet(func() any { return nil }, "check_returncode")
			return o, true, err
		}
		return dontKnow("what a command prints"), true, err
	case call == "asyncio.create_subprocess_exec" || call == "asyncio.create_subprocess_shell":
		l := launch{words: args, dir: keys["cwd"], env: keys["env"]}
		if strings.HasSuffix(call, "shell") {
			l = launch{line: arg(0, "cmd"), dir: keys["cwd"], env: keys["env"]}
		}
		stays, err := m.launches(l, at)
		o := m.process(stays, "wait communicate", integer(0))
		o.quiet(func() any { return nil }, "terminate", "kill", "send_signal")
		o.set("returncode", nil)
		return o, true, err
	}
	return nil, false, nil
}

// jsLaunches are the calls of Node.js, Deno and Bun that start a command; done is false for
// any other.
func (m *machine) jsLaunches(f *opaque, args []any, at spot) (v any, done bool, err error) {
	call := f.path
	items := func(x any) []any {
		if l, ok := x.(*list); ok {
			return append([]any{}, l.items...)
		}
		return []any{}
	}
	var options *object
	for _, a := range args {
		if o, ok := a.(*object); ok && (o.class == nil || !o.class.builtin) {
			options = o
		}
	}
	option := func(name string) any {
		if options == nil {
			return nil
		}
		v, _ := options.get(name)
		if _, ok := v.(undef); ok {
			return nil
		}
		return v
	}
	l := launch{dir: option("cwd"), env: option("env")}
	_, name, _ := strings.Cut(call, ".")
	switch call {
	case "child_process.spawn", "child_process.spawnSync", "child_process.execFile", "child_process.execFileSync":
		l.words = append([]any{first(args)}, items(at3(args, 1))...)
		if yes, _ := truth(option("shell"), false); yes {
			line := ""
			for i, w := range l.words {
				if o, ok := w.(*opaque); ok && interpreters[o.path] != "" {
					w = interpreters[o.path]
				}
				t, ok := w.(string)
				if !ok {
					return nil, false, nil
				}
				if i > 0 {
					line += " "
				}
				line += t
			}
			l.words, l.line = nil, line
		}
	case "child_process.exec", "child_process.execSync":
		l.line = first(args)
	case "Bun.spawn", "Bun.spawnSync":
		l.words = items(first(args))
		if o, ok := first(args).(*object); ok && options == o {
			l.words = items(option("cmd"))
		}
	case "Deno.Command().spawn", "Deno.Command().output", "Deno.Command().outputSync":
		if f.recv == nil {
			return nil, false, nil
		}
		options, _ = at3(f.recv.args, 1).(*object)
		l.words = append([]any{first(f.recv.args)}, items(option("args"))...)
		l.dir, l.env, l.waits = option("cwd"), option("env"), !strings.HasSuffix(call, "spawn")
		if own, ok := l.env.(*object); ok { // besides those of the program
			env := newObject()
			for k, v := range m.env.all() {
				env.set(k, v)
			}
			for _, k := range own.keys {
				env.set(k, own.cells[k].v)
			}
			l.env = env
		}
	case "execa.execa", "execa.execaSync", "execa.execaCommand", "execa", "cross-spawn", "cross-spawn.sync":
		l.words = append([]any{first(args)}, items(at3(args, 1))...)
		if strings.HasSuffix(call, "Command") {
			l.words, l.line = nil, first(args)
		}
	default:
		return nil, false, nil
	}
	sync := strings.HasSuffix(name, "Sync") || call == "cross-spawn.sync"
	l.waits = sync
	stays, err := m.launches(l, at)
	if err != nil || sync {
		if name == "spawnSync" {
			o := newObject()
			o.set("status", integer(0))
			o.set("error", undefined)
			o.set("signal", nil)
			o.set("stdout", dontKnow("what a command prints"))
			o.set("stderr", dontKnow("what a command prints"))
			o.set("exitCode", integer(0))
			o.set("success", true)
			return o, true, err
		}
		return dontKnow("what a command prints"), true, err
	}
	if !stays {
		return nil, false, nil
	}
	o := newObject()
	o.class = &class{name: "ChildProcess", builtin: true, methods: newObject(), statics: newObject()}
	o.quiet(func() any { return o }, "on", "once", "addListener", "off", "removeListener", "ref", "unref")
	o.quiet(func() any { return true }, "kill", "send", "emit")
	for _, k := range []string{"pid", "stdout", "stderr", "stdin"} {
		o.set(k, dontKnow("a process of its own"))
	}
	o.set("exitCode", nil)
	o.set("killed", false)
	o.set("status", dontKnow("when a process of its own ends"))
	o.set("exited", dontKnow("when a process of its own ends"))
	m.served = true // it lives as long as that
	return o, true, nil
}

// rbLaunches are the calls of Ruby that start a command.
func (m *machine) rbLaunches(name string, args []any, kw *object, at spot) (any, error) {
	if name == "`" {
		return nil, giveUp("another program that is started")
	}
	l := launch{waits: name == "system", instead: name == "exec"}
	options := func(o *object) {
		for _, k := range o.keys {
			if rbShow(rbUnkey(k)) == "chdir" {
				l.dir = o.cells[k].v
			}
		}
	}
	if kw != nil {
		options(kw)
	}
	if o, ok := first(args).(*object); ok && o.dict { // variables that are set for it
		env := newObject()
		for k, v := range m.env.all() {
			env.set(k, v)
		}
		for _, k := range o.keys {
			env.set(rbShow(rbUnkey(k)), o.cells[k].v)
		}
		l.env, args = env, args[1:]
	}
	if n := len(args); n > 0 {
		if o, ok := args[n-1].(*object); ok {
			options(o)
			args = args[:n-1]
		}
	}
	if len(args) == 1 {
		l.line = args[0]
	} else {
		l.words = append([]any{}, args...)
	}
	stays, err := m.launches(l, at)
	switch {
	case err != nil:
		return nil, err
	case name == "system":
		return true, nil
	case name == "exec":
		return nil, giveUp("another program that is started")
	case stays:
		m.spawned = true
	}
	return dontKnow("a process of its own"), nil
}

// goLaunches are the calls of Go that start a command: results are what they give.
func (m *machine) goLaunches(f *opaque, args []any, at spot) (results []goValue, done bool, err error) {
	pairs := func(x any) any { // the environment as Go has it
		l, ok := x.(*list)
		if !ok {
			return x
		}
		env := newObject()
		for _, v := range l.items {
			text, ok := v.(string)
			if !ok {
				return dontKnow("an environment")
			}
			k, v, _ := strings.Cut(text, "=")
			env.set(k, v)
		}
		return env
	}
	if f.path == "syscall.Exec" || f.path == "golang.org/x/sys/unix.Exec" {
		argv, ok := at3(args, 1).(*list)
		if !ok || len(argv.items) == 0 {
			return nil, false, nil
		}
		_, err = m.launches(launch{words: append([]any{args[0]}, argv.items[1:]...), env: pairs(at3(args, 2)), instead: true}, at)
		return nil, err != nil, err
	}
	if name, ok := first(args).(string); ok && f.path == "os/exec.LookPath" && m.e.Launch != nil {
		return []goValue{{name, tString}, {nil, tFault}}, true, nil
	}
	cmd := f.recv
	if cmd == nil || !strings.HasPrefix(f.path, "os/exec.Command") || m.e.Launch == nil {
		return nil, false, nil
	}
	name := f.path[strings.LastIndexByte(f.path, '.')+1:]
	l := launch{words: append([]any{}, cmd.args...), waits: name != "Start"}
	if strings.HasPrefix(cmd.path, "os/exec.CommandContext") && len(l.words) > 0 {
		l.words = l.words[1:]
	}
	if cmd.props != nil {
		if v, ok := cmd.props.get("Dir"); ok {
			l.dir = v
		}
		if v, ok := cmd.props.get("Env"); ok {
			l.env = pairs(v)
		}
	}
	none := goValue{nil, tFault}
	switch name {
	case "Wait":
		if stays, started := m.started[cmd]; started && stays {
			return nil, true, &exit{stays: true}
		} else if started {
			return []goValue{none}, true, nil
		}
	case "Run", "Start":
		stays, err := m.launches(l, at)
		if m.started == nil {
			m.started = map[*opaque]bool{}
		}
		m.started[cmd] = stays
		return []goValue{none}, true, err
	case "Output", "CombinedOutput":
		_, err := m.launches(l, at)
		return []goValue{{dontKnow("what a command prints"), tBytes}, none}, true, err
	}
	return nil, false, nil
}

// jvProcessBuilder is a command of Java that is put together.
func (m *machine) jvProcessBuilder(args []any) *object {
	o := jvBuiltin("ProcessBuilder")
	words := func(args []any) []any {
		if l, ok := first(args).(*list); ok && len(args) == 1 {
			return append([]any{}, l.items...)
		}
		return append([]any{}, args...)
	}
	said := words(args)
	var env *object
	var dir any
	method := func(name string, do func(args []any, at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(_ *machine, _ any, args []any, _ map[string]any, at spot) (any, error) { return do(args, at) }})
	}
	for _, name := range strings.Fields("inheritIO redirectErrorStream redirectOutput redirectError redirectInput") {
		method(name, func([]any, spot) (any, error) { return o, nil })
	}
	method("command", func(args []any, _ spot) (any, error) {
		if len(args) == 0 {
			return &list{items: said}, nil
		}
		said = words(args)
		return o, nil
	})
	method("directory", func(args []any, _ spot) (any, error) {
		dir = first(args)
		return o, nil
	})
	method("environment", func([]any, spot) (any, error) {
		if env == nil {
			env = jvMap()
			for _, k := range m.envKeys() {
				jvPut(env, k, m.env.text(k))
			}
		}
		return env, nil
	})
	method("start", func(_ []any, at spot) (any, error) {
		l := launch{words: said, dir: dir}
		if env != nil {
			given := newObject()
			for _, k := range env.keys {
				given.set(jvShow(jvKeyOf(env, k)), env.cells[k].v)
			}
			l.env = given
		}
		return m.jvProcess(l, at)
	})
	return o
}

// jvProcess is a process that a program of Java has started.
func (m *machine) jvProcess(l launch, at spot) (any, error) {
	stays, err := m.launches(l, at)
	p := m.process(stays, "waitFor", integer(0))
	p.quiet(func() any { return integer(0) }, "exitValue")
	p.quiet(func() any { return stays }, "isAlive")
	p.quiet(func() any { return nil }, "destroy", "destroyForcibly")
	for _, name := range strings.Fields("getInputStream getErrorStream getOutputStream pid onExit toHandle inputReader info") {
		p.quiet(func() any { return dontKnow("a process of its own") }, name)
	}
	m.served = m.served || stays
	return p, err
}

// rsProcess calls a method of a command of Rust, or of a process that it started.
func (m *machine) rsProcess(d *rsData, name string, args []any, at rsAt) (any, error) {
	if d.typ != "process::Command" {
		stays := d.fields[0].v == true
		switch name {
		case "wait", "wait_with_output", "try_wait":
			if stays && name != "try_wait" {
				return nil, &exit{stays: true}
			}
			return rsOk(&rsData{typ: "process::Status", fields: []*rsCell{{v: false}}}), nil
		case "success":
			return true, nil
		case "code":
			return rsSome(integer(0)), nil
		case "kill":
			return rsOk(&rsList{tuple: true}), nil
		}
		return dontKnow("a process of its own"), nil
	}
	words := d.fields[0].v.(*list)
	own := func() *object {
		env, ok := d.fields[1].v.(*object)
		if !ok {
			env = newObject()
			for k, v := range m.env.all() {
				env.set(k, v)
			}
			d.fields[1].v = env
		}
		return env
	}
	switch name {
	case "arg":
		words.items = append(words.items, rsOpened(first(args)))
	case "args":
		given, ok := rsOpened(first(args)).(*rsList)
		if !ok {
			words.items = append(words.items, dontKnow("arguments"))
			break
		}
		for _, c := range given.items {
			words.items = append(words.items, rsOpened(c.v))
		}
	case "env":
		if k, ok := rsOpened(first(args)).(string); ok {
			own().set(k, rsOpened(at2(args, 1)))
		} else {
			d.fields[1].v = dontKnow("an environment")
		}
	case "env_remove":
		if k, ok := rsOpened(first(args)).(string); ok {
			own().set(k, undefined)
		}
	case "env_clear":
		d.fields[1].v = newObject()
	case "envs":
		d.fields[1].v = dontKnow("an environment")
	case "current_dir":
		d.fields[2].v = rsOpened(first(args))
	case "stdin", "stdout", "stderr", "kill_on_drop", "process_group":
	case "status", "output", "spawn", "exec":
		l := launch{words: words.items, env: d.fields[1].v, dir: d.fields[2].v, waits: name == "status" || name == "output", instead: name == "exec"}
		stays, err := m.launches(l, m.rsSpot(at))
		if err != nil {
			return nil, err
		}
		return rsOk(&rsData{typ: "process::Child", fields: []*rsCell{{v: stays}}}), nil
	default:
		return nil, giveUp("the method %s of a command", name)
	}
	return d, nil
}
