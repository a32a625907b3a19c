package trace

import (
	"slices"
	"strings"

	"ubique/core/value"
)

// Processes and threads that a program of Node.js starts with a file of the tree
// (Node.js 24, "Child process", "Worker threads").

// maxNested is how many processes are followed, one in another.
const maxNested = 3

// starts runs what a call starts beside the program; done is false for any other
// call, and where it is not told which file that is.
func (m *machine) starts(path string, args []any) (v any, done bool, err error) {
	words := func(x any) []any {
		if l, ok := x.(*list); ok {
			return l.items
		}
		return nil
	}
	option := func(x any, name string) any {
		if o, ok := x.(*object); ok {
			v, _ := o.get(name)
			return v
		}
		return undefined
	}
	last := func() any {
		if len(args) > 0 {
			return args[len(args)-1]
		}
		return undefined
	}
	switch path {
	case "worker_threads.Worker":
		opts := at3(args, 1)
		err = m.child(first(args), words(option(opts, "argv")), option(opts, "env"), option(opts, "workerData"), true)
	case "child_process.fork":
		err = m.child(first(args), words(at3(args, 1)), option(last(), "env"), undefined, false)
	case "child_process.spawn", "child_process.execFile":
		given := words(at3(args, 1))
		o, isPath := first(args).(*opaque)
		if first(args) != any("node") && !(isPath && o.path == "process.execPath") || len(given) == 0 {
			return nil, false, nil
		}
		if t, ok := given[0].(string); !ok || strings.HasPrefix(t, "-") {
			return nil, false, nil
		}
		err = m.child(given[0], given[1:], option(last(), "env"), undefined, false)
	default:
		return nil, false, nil
	}
	return &opaque{path: path + "()", fresh: true}, true, err
}

// child goes through a file as a process or a thread of its own: how it ends is
// not how the program ends.
func (m *machine) child(file any, argv []any, env, data any, thread bool) error {
	if o, ok := file.(*object); ok { // new URL('./worker.js', import.meta.url)
		file, _ = o.get("pathname")
	}
	if _, ok := file.(*opaque); ok || m.nested >= maxNested {
		return undecided("which file a process of its own runs")
	}
	p, ok := m.treePath(pathText(file))
	if !ok {
		return undecided("which file a process of its own runs")
	}
	f := m.e.Loader.File(p)
	for _, end := range []string{".js", ".mjs", ".cjs", ".ts"} {
		if f == nil {
			f = m.e.Loader.File(p + end)
		}
	}
	if f == nil || f.Body == nil || !javascript(f.Lang) {
		return undecided("the file %s, which a process of its own runs", p)
	}
	e := value.New(m.e.Loader, f.Name)
	e.Dir, e.Launch = m.e.Dir, m.e.Launch
	e.Args = []*value.Value{}
	for _, a := range argv {
		e.Args = append(e.Args, toValue(a, spot{f, f.Body}))
	}
	n := newMachine(e, f, m.set, m.noted)
	n.env, n.nested, n.inThread, n.handedOn, n.steps = m.env.clone(), m.nested+1, thread, data, m.steps
	switch x := env.(type) {
	case *object:
		n.env = variables{map[string]string{}, m.env.seen}
		for _, k := range x.keys {
			if v := x.cells[k].v; !known(v) {
				return undecided("the environment of a process of its own")
			} else if v != any(undefined) {
				n.env.put(k, show(v))
			}
		}
	case undef, *envMap:
	default:
		return undecided("the environment of a process of its own")
	}
	_, err := n.load(f.Name)
	for err == nil && len(n.later) > 0 {
		next := n.later[0]
		n.later = n.later[1:]
		_, err = n.ran(next.fn, next.args, next.at)
	}
	m.calls, m.steps = append(m.calls, n.calls[:min(len(n.calls), max(0, maxCalls-len(m.calls)))]...), n.steps
	m.waiting = m.waiting || n.waiting
	for _, r := range n.reads {
		if !slices.ContainsFunc(m.reads, func(x *value.Value) bool { return x.Text == r.Text }) && len(m.reads) < maxReads {
			m.reads = append(m.reads, r)
		}
	}
	if s, ok := err.(*stop); ok && len(n.calls) == 0 {
		return s
	}
	if n.doubt != "" && m.doubt == "" {
		m.doubt = n.doubt
	}
	return nil
}

// shared takes out the calls of a worker that other workers made before it with the same
// arguments: the workers of a cluster share what they listen on (Node.js 24, "cluster",
// "How it works").
func (m *machine) shared(before int) {
	same := func(a, b Call) bool {
		return a.At == b.At && slices.EqualFunc(a.Args, b.Args, func(x, y *value.Value) bool { return x.String() == y.String() })
	}
	kept := m.calls[:before:before]
	for _, c := range m.calls[before:] {
		if !slices.ContainsFunc(m.calls[:before], func(d Call) bool { return same(c, d) }) {
			kept = append(kept, c)
		}
	}
	m.calls = kept
}
