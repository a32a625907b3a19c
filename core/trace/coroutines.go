package trace

import "strings"

// What Python does with functions that wait: a call makes a coroutine, which runs
// once it is waited for or made a task (Python 3.14, "Coroutines and Tasks"; Trio
// 0.31 and AnyIO 4, "nursery" and "task group").

// coroutine is a call that has not run yet, or a task.
type coroutine struct {
	run   func() (any, error)
	begun bool
	v     any
	err   *thrown
	never bool // it does not end
}

// begin runs a coroutine as a task: one that does not end holds up no other.
func (c *coroutine) begin() error {
	if c.begun {
		return nil
	}
	c.begun = true
	v, err := c.run()
	switch err := err.(type) {
	case nil:
		c.v = v
	case *exit:
		if !err.stays {
			return err
		}
		c.never = true
	case *thrown:
		c.err = err
	default:
		return err
	}
	return nil
}

// wait gives what a coroutine comes to.
func (c *coroutine) wait() (any, error) {
	if err := c.begin(); err != nil {
		return nil, err
	}
	switch {
	case c.never:
		return nil, &exit{stays: true}
	case c.err != nil:
		return nil, c.err
	}
	return c.v, nil
}

// gathered is a coroutine that waits for several.
func gathered(of []any) (*coroutine, error) {
	all := &coroutine{begun: true}
	out := &list{}
	for _, x := range of {
		c, ok := x.(*coroutine)
		if !ok {
			out.items = append(out.items, x)
			continue
		}
		if err := c.begin(); err != nil {
			return nil, err
		}
		all.never = all.never || c.never
		if all.err == nil {
			all.err = c.err
		}
		out.items = append(out.items, c.v)
	}
	all.v = out
	all.never = all.never && all.err == nil // an error of one ends the waiting
	return all, nil
}

// tasks calls what waits for coroutines or makes tasks of them; done is false for
// all else.
func (m *machine) tasks(path string, args []any, keys map[string]any, at spot) (v any, done bool, err error) {
	name := path[strings.LastIndexByte(path, '.')+1:]
	first := first(args)
	switch {
	case threads[path]:
		return m.thread(path, args, keys), true, nil
	case strings.HasSuffix(path, "PoolExecutor().submit") && len(args) > 0:
		_, err := m.beside(func() (any, error) { return m.call(args[0], undefined, args[1:], keys, at) })
		return dontKnow("what runs beside the program"), true, err
	case path == "asyncio.to_thread" && len(args) > 0, name == "run_in_executor" && len(args) > 1:
		if name == "run_in_executor" {
			args = args[1:]
		}
		c := &coroutine{begun: true}
		c.never, err = m.beside(func() (any, error) {
			v, err := m.call(args[0], undefined, args[1:], keys, at)
			c.v = v
			return v, err
		})
		return c, true, err
	case path == "asyncio.gather":
		c, err := gathered(args)
		if err != nil {
			return nil, true, err
		}
		return c, true, nil
	case name == "run" && (path == "asyncio.run" || path == "uvloop.run" || path == "anyio.run" || path == "trio.run" || path == "asyncio.Runner().run"), name == "run_until_complete":
		if fn, ok := first.(*function); ok {
			if first, err = m.call(fn, undefined, args[1:], nil, at); err != nil {
				return nil, true, err
			}
		}
		if c, ok := first.(*coroutine); ok {
			v, err := c.wait()
			return v, true, err
		}
		return first, strings.HasPrefix(path, "asyncio.") || strings.HasPrefix(path, "anyio."), nil
	case name == "start_soon":
		if fn, ok := first.(*function); ok {
			if first, err = m.call(fn, undefined, args[1:], nil, at); err != nil {
				return nil, true, err
			}
			if c, ok := first.(*coroutine); ok {
				return nil, true, c.begin()
			}
			return nil, true, nil
		}
	case name == "create_task", name == "ensure_future", name == "wait_for", name == "shield":
		if c, ok := first.(*coroutine); ok {
			return c, true, c.begin()
		}
		return first, strings.HasPrefix(path, "asyncio."), nil
	case path == "asyncio.wait", path == "asyncio.as_completed":
		l, ok := first.(*list)
		if !ok {
			return nil, false, nil
		}
		c, err := gathered(l.items)
		if err != nil {
			return nil, true, err
		}
		c.v = dontKnow("which tasks are done")
		c.err = nil // it is kept in its task
		return c, true, nil
	}
	for _, a := range args { // what is not followed runs what it is handed
		if c, ok := a.(*coroutine); ok {
			if err := c.begin(); err != nil {
				return nil, true, err
			}
		}
	}
	return nil, false, nil
}

// ran calls a function from outside of the program: one that waits runs too.
func (m *machine) ran(fn any, args []any, at spot) (any, error) {
	v, err := m.call(fn, undefined, args, nil, at)
	if c, ok := v.(*coroutine); ok && err == nil {
		return c.wait()
	}
	return v, err
}

// threads are what runs a function beside the program: their classes, of which the
// program may make classes of its own (Python 3.14, "threading", "multiprocessing").
var threads = words("threading.Thread threading.Timer multiprocessing.Process multiprocessing.context.Process")

// thread makes one.
func (m *machine) thread(path string, args []any, keys map[string]any) any {
	given := func(i int, name string) any {
		if v, ok := keys[name]; ok {
			return v
		}
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	target, with, named := given(1, "target"), given(3, "args"), given(4, "kwargs")
	if path == "threading.Timer" {
		target, with, named = given(1, "function"), given(2, "args"), given(3, "kwargs")
	}
	o := newObject()
	o.class = &class{name: "Thread", builtin: true, methods: newObject(), statics: newObject()}
	o.set("daemon", keys["daemon"])
	o.set("name", keys["name"])
	never := false
	method := func(name string, do func(at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(_ *machine, _ any, _ []any, _ map[string]any, at spot) (any, error) { return do(at) }})
	}
	method("start", func(at spot) (any, error) {
		var words []any
		if l, ok := with.(*list); ok {
			words = l.items
		} else if with != nil {
			return nil, undecided("what a thread is given")
		}
		more := map[string]any{}
		if d, ok := named.(*object); ok {
			for _, k := range d.keys {
				more[k] = d.cells[k].v
			}
		} else if named != nil {
			return nil, undecided("what a thread is given")
		}
		if target == nil {
			return nil, nil
		}
		served := m.served
		stays, err := m.beside(func() (any, error) { return m.call(target, undefined, words, more, at) })
		if yes, ok := o.get("daemon"); ok && yes == true {
			m.served = served
		}
		never = never || stays
		if yes, ok := o.get("daemon"); ok && stays && yes == true { // it does not keep the program
			m.daemons++
		} else if stays {
			m.keeping++
		}
		return nil, err
	})
	method("join", func(spot) (any, error) {
		if never {
			return nil, &exit{stays: true}
		}
		return nil, nil
	})
	method("is_alive", func(spot) (any, error) { return never, nil })
	for _, name := range []string{"setDaemon", "terminate", "cancel", "close", "kill"} {
		method(name, func(spot) (any, error) { return nil, nil })
	}
	return o
}

// beside runs what runs beside the program: an error or an end of it is its own.
func (m *machine) beside(run func() (any, error)) (stays bool, err error) {
	v, err := run()
	if c, ok := v.(*coroutine); ok && err == nil {
		err = c.begin()
	}
	switch err := err.(type) {
	case nil, *thrown:
		return false, nil
	case *exit:
		m.served = m.served || err.stays
		return err.stays, nil
	}
	return false, err
}
