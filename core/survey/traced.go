package survey

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/trace"
	"ubique/core/value"
)

// blocking are the calls of Python that do not come back while a server runs
// (documentation of Flask, uvicorn, aiohttp, Bottle, waitress, werkzeug,
// socketserver, asyncio and Tornado).
var blocking = words("run run_app run_simple serve_forever run_forever waitress.serve http.server.test")

// noting says which calls of a program are kept while it is gone through.
func noting(main *code.File) func(*value.Value) (note, stays bool) {
	return func(v *value.Value) (note, stays bool) {
		switch main.Lang {
		case code.Go:
			return goNoted(v)
		case code.Ruby:
			return rubyNoted(v)
		case code.PHP:
			_, plain := phpPath(v, false)
			_, made := phpPath(v, true)
			return plain || made, false
		case code.Rust:
			name := rustNoted(v)
			return name != "", name == "rouille.start_server" || name == "start_server" || name == "run"
		case code.Java:
			return jvmPath(main, v, false) != "" || jvmPath(main, v, true) != "", false
		}
		_, note = lookupListen(v)
		note = note || embedsGunicorn(v) || djangoCommand(v)
		if main.Lang == code.Python {
			name := value.Tail(v.Text, 1)
			stays = blocking[name] && (note || name != "run") || blocking[v.Text]
		}
		return note, stays
	}
}

// loading are the servers that load the application before they listen, or that end
// where it cannot be loaded, with the flags and variables by which they do not
// (gunicorn 20.1, uvicorn 0.17, hypercorn 0.13, daphne 4.0, waitress 2.1, Flask 2.2, puma 5.6,
// rack 2.2, thin 1.8: run with an application that raises an error, 2026-11-27).
var loading = map[string]struct{ flags, variables string }{
	"gunicorn": {" --reload ", ""}, "uvicorn": {" --reload --workers ", "WEB_CONCURRENCY"}, "hypercorn": {" --reload --workers -w ", ""}, "daphne": {}, "waitress-serve": {},
	"flask": {" --debug --reload --debugger ", "FLASK_DEBUG"}, "puma": {" -w --workers ", "WEB_CONCURRENCY"}, "rackup": {}, "thin": {},
	"deno": {}, "bun": {},
}

// loads lets an application end the server that loads it: an error that nothing
// catches, or an exit, while it is loaded.
func (s *Starter) loads(st *fact.Start, b Beginning) {
	k := st.Final.Known
	if k == nil || st.Target == nil || st.Target.File == "" || len(st.Listeners) == 0 {
		return
	}
	how, ok := loading[k.Name]
	manages := s.isManage(st) && slices.ContainsFunc(st.Listeners, func(l *fact.Listener) bool { return l.Server == "runserver" })
	ok = ok || manages
	main := st.Program.Loader.File(st.Target.File)
	if !ok || main == nil || main.Body == nil || !trace.Follows(main.Lang) {
		return
	}
	for _, a := range st.Final.Args {
		if flag, _, _ := strings.Cut(a.Text, "="); strings.HasPrefix(flag, "-") && strings.Contains(how.flags, " "+flag+" ") {
			return
		}
	}
	if k.Name == "puma" && st.Server != "" { // processes of its own are started again and again
		if f := st.Program.Loader.File(st.Server); f != nil && slices.ContainsFunc(f.Calls, func(c code.Site) bool { return c.Node.Kid(0).Is(code.Name) && c.Node.Kids[0].Name == "workers" }) {
			return
		}
	}
	var factories []string
	switch t := st.Target; {
	case t.Kind != command.CallableTarget:
	case strings.Contains(t.Named, "(") && !strings.HasSuffix(t.Named, "()"): // what it is given is not read
	case t.Factory && t.Callable != "":
		factories = []string{t.Callable}
	case k.Name == "flask":
		factories = []string{"create_app", "make_app"}
	}
	var known runs
	others := &launcher{s: s, st: st, b: b, had: map[string]*fact.Start{}}
	run := func(env value.Environ) *trace.Result {
		env = commanded(st, b, env)
		return known.under(env, func() trace.Result {
			called := factories
			if f := main.Top.Names["app"]; k.Name == "flask" && st.Target.Callable == "" && (f != nil || main.Top.Names["application"] != nil) {
				called = nil
			}
			if manages {
				return trace.Run(st.Program, main, env, noting(main))
			}
			return others.run(st.Program, env, func() trace.Result { return trace.Load(st.Program, main, env, noting(main), called) })
		})
	}
	if st.Asks == nil {
		asking(st, run)
	}
	for _, l := range st.Listeners {
		endsFirst(l, func(env value.Environ) string {
			watched := slices.ContainsFunc(strings.Fields(how.variables), func(name string) bool {
				v, _ := env.Lookup(name, false)
				return v != ""
			})
			if r := run(env); !watched && len(r.Calls) == 0 && len(r.Launched) == 0 {
				return ended(r, "the application ends while it is loaded")
			}
			return ""
		})
	}
}

// follow lets the listeners of a program be followed through it, where their
// values do not tell where they listen.
func (s *Starter) follow(st *fact.Start, b Beginning) {
	if st.Program.Main == "" {
		return
	}
	main := st.Program.Loader.File(st.Program.Main)
	if main == nil || main.Body == nil || !trace.Follows(main.Lang) {
		return
	}
	var known runs
	others := &launcher{s: s, st: st, b: b, had: map[string]*fact.Start{}}
	run := func(env value.Environ) *trace.Result {
		env = commanded(st, b, env)
		return known.under(env, func() trace.Result {
			r := others.run(st.Program, env, func() trace.Result { return trace.Run(st.Program, main, env, noting(main)) })
			env.Seen = r.Seen
			taken(st.Program, &r, env)
			return r
		})
	}
	asking(st, run)
	st.Stopped = func(env value.Environ) (string, place.Span) {
		r := run(env)
		return r.Reason, r.At
	}
	// php serves by itself only where it is told to; else it runs a program.
	if k := st.Final.Known; len(st.Listeners) == 0 && (k == nil || k.Server == "" || k.Name == "php") && st.Final.Reason == "" {
		results := []*trace.Result{run(value.Environ{}), run(value.Environ{Set: map[string]string{"PORT": "8080"}})}
		if results[0].Forks { // its processes may be those that listen
			results = append(results, run(value.Environ{Worker: true}))
		}
		st.Listeners = s.met(st, results...)
	}
	called := map[place.Span]bool{}
	open := func(env value.Environ) bool {
		return slices.ContainsFunc(st.Listeners, func(l *fact.Listener) bool { return l.Via == "code" && l.Under(env).Outcome == "unknown" })
	}
	if open(value.Environ{}) {
		plain, set := run(value.Environ{}), run(value.Environ{Set: map[string]string{"PORT": "8080"}})
		s.again(st, plain, set)
		if !reached(st, plain) && !reached(st, set) { // it listens elsewhere
			st.Listeners = append(st.Listeners, s.met(st, plain, set)...)
		}
	}
	at := map[place.Span]bool{}
	for _, l := range st.Listeners {
		called[l.At], at[l.At] = l.Met || l.Server == "sinatra", true
	}
	for _, f := range st.Program.Loader.Loaded() {
		for _, site := range f.Calls {
			if p := f.At(site.Node); at[p] {
				// What a framework listens on is set by calls that do not listen.
				find := finders[f.Lang]
				called[p] = f.Lang != code.Java && f.Lang != code.Rust || find(st.Program, f, site, func(string) bool { return true }) != nil
			}
		}
	}
	attach := func(l *fact.Listener) {
		if l.Via != "code" || !called[l.At] || l.Follow != nil {
			return
		}
		l.Asked = func() []*value.Value {
			list := slices.Clone(run(value.Environ{}).Reads)
			for _, r := range run(value.Environ{Set: map[string]string{"PORT": "8080"}}).Reads {
				if !slices.ContainsFunc(list, func(x *value.Value) bool { return x.Text == r.Text }) {
					list = append(list, r)
				}
			}
			return list
		}
		l.Follow = func(env value.Environ) (fact.Outcome, bool) {
			which, several, before := 0, 0, true
			for _, x := range st.Listeners {
				before = before && x != l
				if x.At == l.At && x.Via == "code" {
					if several++; before {
						which++
					}
				}
			}
			r := run(env)
			out, ok := cameTo(st.Program, r, l, env, which, several)
			if r.Forks && !env.Worker && (ok && out.Outcome == "skipped" || !ok && len(r.Calls) == 0) {
				env.Worker = true
				out, ok = cameTo(st.Program, run(env), l, env, which, several)
			}
			return out, ok
		}
	}
	for _, l := range st.Listeners {
		attach(l)
	}
	started := map[nth]bool{}
	if s.nested < maxNested && trace.Launches(st.Program.Loader.Loaded()) {
		others.listeners(started, run, run(value.Environ{}), run(value.Environ{Set: map[string]string{"PORT": "8080"}}))
	}
	if st.More != nil { // that of its settings
		return
	}
	st.More = func(env value.Environ) {
		n := len(st.Listeners)
		r := run(env)
		if n == 0 && r.Reason == "" {
			st.Listeners = s.met(st, r)
		}
		if n == 0 || open(env) || r.Reason == "" && r.Ended == "" {
			s.again(st, r)
		}
		if n > 0 && r.Reason == "" && !slices.ContainsFunc(st.Listeners, func(l *fact.Listener) bool { return l.Via != "code" || l.Happens(env).Outcome != "skipped" }) {
			st.Listeners = append(st.Listeners, s.met(st, r)...) // it listens elsewhere
		}
		for _, l := range st.Listeners[n:] {
			called[l.At], l.Ended = true, st.Final.Ends
			attach(l)
		}
		others.listeners(started, run, r)
	}
}

// again adds listeners for calls that a program comes to more than once.
func (s *Starter) again(st *fact.Start, results ...*trace.Result) {
	have, times := map[place.Span]int{}, map[place.Span]int{}
	like := map[place.Span]*fact.Listener{}
	for _, l := range st.Listeners {
		if l.Via == "code" {
			have[l.At]++
			like[l.At] = l
		}
	}
	for _, r := range results {
		n := map[place.Span]int{}
		for _, c := range r.Calls {
			n[c.At] += max(1, len(listeners(st.Program, c)))
			times[c.At] = max(times[c.At], n[c.At])
		}
	}
	for _, l := range slices.Clone(st.Listeners) {
		for like[l.At] == l && have[l.At] < times[l.At] && have[l.At] < 8 {
			have[l.At]++
			why := value.NotKnown("a value that is made while the program runs", l.At)
			st.Listeners = append(st.Listeners, &fact.Listener{Process: l.Process, Server: l.Server, Via: "code", At: l.At, PortAt: l.At, HostAt: l.At, Port: why, Host: why, Dev: l.Dev, Met: true})
		}
	}
}

// reached reports whether a program comes to one of its listeners, or is not
// followed.
func reached(st *fact.Start, r *trace.Result) bool {
	return r.Reason != "" || slices.ContainsFunc(r.Calls, func(c trace.Call) bool {
		return slices.ContainsFunc(st.Listeners, func(l *fact.Listener) bool { return l.Via != "code" || l.At == c.At })
	})
}

// met are the listeners that a program comes to while it is gone through, where
// no call was found that listens.
func (s *Starter) met(st *fact.Start, results ...*trace.Result) (list []*fact.Listener) {
	seen := map[place.Span]bool{}
	for _, r := range results {
		for _, c := range r.Calls {
			if seen[c.At] {
				continue
			}
			seen[c.At] = true
			x := calledWith(st.Program, c)
			if x == nil {
				continue
			}
			why := value.NotKnown("a value that is made while the program runs", c.At)
			list = append(list, &fact.Listener{Process: st.Process, Server: x.Server, Via: "code", At: c.At, PortAt: x.PortAt, HostAt: x.HostAt, Port: why, Host: why, Dev: x.Dev, Met: true})
		}
	}
	return list
}

// embedsGunicorn reports whether a call runs gunicorn from the program.
func embedsGunicorn(v *value.Value) bool {
	return strings.HasPrefix(v.Text, "gunicorn.app.") && strings.HasSuffix(v.Text, ".run")
}

// calledWith is the listener that a call makes of what it was given; nil where it
// listens nowhere.
func calledWith(e *value.Eval, c trace.Call) *fact.Listener {
	if c.File.Lang == code.Go {
		recv, name := goCallee(c.Callee)
		return goFilled(e, c.File, c.Node, name, recv, c.Args)
	}
	if c.File.Lang == code.Java {
		path := jvmPath(c.File, c.Callee, c.Node.Is(code.New))
		if path == "" {
			return nil
		}
		var recv *value.Value
		if c.Callee.Recv != nil && !c.Node.Is(code.New) {
			recv = c.Callee.Recv
		}
		return jvmFilled(e, c.File, path, recv, c.Args, c.Keys, c.At)
	}
	if c.File.Lang == code.PHP {
		s, ok := phpPath(c.Callee, c.Node.Is(code.New))
		if !ok {
			return nil
		}
		l := phpFilled(s, c.Args, c.At)
		if l != nil {
			l.Dev = c.Callee.Text == trace.PHPServes
		}
		return l
	}
	if c.File.Lang == code.Rust {
		name := rustNoted(c.Callee)
		if name == "" || len(c.Args) == 0 {
			return nil
		}
		return rustFilled(name, c.Args, c.At)
	}
	if c.File.Lang == code.Ruby {
		l := &fact.Listener{Via: "code", At: c.At}
		if !rubyFilled(l, c.Callee.Text, c.Args, c.Keys) {
			return nil
		}
		return l
	}
	if embedsGunicorn(c.Callee) {
		l := &fact.Listener{Server: "gunicorn", Via: "code", At: c.At, Bind: c.Keys["bind"], PortAt: c.At, HostAt: c.At}
		return l
	}
	if djangoCommand(c.Callee) {
		return djangoServes(c)
	}
	s, ok := lookupListen(c.Callee)
	if !ok {
		return nil
	}
	return filled(e, c.File, code.Site{Node: c.Node, Scope: c.File.Top}, s, c.Callee, slices.Clone(c.Args), c.Keys)
}

// listeners are those that a call makes: one, or one for each address that it was
// given.
func listeners(e *value.Eval, c trace.Call) []*fact.Listener {
	x := calledWith(e, c)
	if x == nil {
		return nil
	}
	if x.Bind != nil && x.Bind.Kind == value.Str && x.Server == "waitress.serve" { // documentation of waitress 2.1, "Arguments", listen
		var list []*fact.Listener
		for _, w := range strings.Fields(x.Bind.Text) {
			one := *x
			one.Bind = value.Text(w, x.Bind.At)
			list = append(list, &one)
		}
		if len(list) > 0 {
			return list
		}
	}
	if x.Server == "hypercorn" && x.Bind != nil { // as many as its settings name
		for _, a := range c.Args {
			if a == nil || a.Props == nil {
				continue
			}
			if set := a.Props.Get("bind"); set != nil && set.Kind == value.List && len(set.Kids) > 1 {
				var list []*fact.Listener
				for _, k := range set.Kids {
					one := *x
					one.Bind = k
					list = append(list, &one)
				}
				return list
			}
		}
	}
	return []*fact.Listener{x}
}

// commanded is an environment with what the command sets in it.
func commanded(st *fact.Start, b Beginning, env value.Environ) value.Environ {
	more, vague := map[string]string{}, map[string]bool{}
	for k, v := range b.EnvValues {
		if _, set := env.Set[k]; !set && v != nil {
			if o := v.Under(env); o.Kind == value.Str {
				more[k] = o.Text
			}
		}
	}
	given := env // words are made before anything is taken out
	for _, a := range st.Final.Env {
		if a.Gone {
			env = env.Without(a.Name)
			delete(more, a.Name)
			delete(vague, a.Name)
			if a.Name == "" {
				clear(more)
				clear(vague)
			}
		}
		if a.Value != nil {
			o := a.Value.Under(given)
			switch {
			case o.Kind == value.Str:
				more[a.Name] = o.Text
				delete(vague, a.Name)
			case !o.Known() && !o.Absent():
				vague[a.Name] = true
			}
		}
	}
	env = env.With(more)
	env.Vague = vague
	env.Filled = phpFills(st)
	return env
}

// phpFills reports whether PHP puts the environment into $_ENV (PHP manual, "Core
// php.ini directives", variables_order): without a php.ini it does, as in the image
// that PHP publishes; the two files that PHP ships and every distribution installs
// say GPCS, and it does not.
func phpFills(st *fact.Start) bool {
	words := strings.Fields(st.Command)
	for i, w := range words {
		v, here := strings.CutPrefix(w, "-d")
		if v == "" && here && i+1 < len(words) {
			v = words[i+1]
		}
		if order, ok := strings.CutPrefix(v, "variables_order="); ok && here {
			return strings.Contains(strings.Trim(order, `'"`), "E")
		}
		if w == "-n" && i > 0 && strings.HasSuffix(words[i-1], "php") {
			return true
		}
	}
	d := st.Descriptor
	if d == nil || d.Image == nil || strings.Contains(d.Image.Text, "php.ini") {
		return false
	}
	for _, r := range d.Image.Runs {
		if strings.Contains(r.Text, "php.ini") {
			return false
		}
	}
	for _, c := range d.Image.Copies {
		if strings.Contains(strings.Join(c.Sources, " ")+c.Dest, "php.ini") {
			return false
		}
	}
	return slices.ContainsFunc(d.Image.Bases, func(b fact.Base) bool { return b.Final && b.Name == "php" })
}

// alone are the servers that a program cannot make twice on one port: the second one
// raises an error there.
var alone = map[string]bool{"node": true, "node options": true, "socketserver": true, "http server class": true, "java": true}

// caring is how source looks that may see to a port that is taken, or share it: a
// handler of an exception, of the event "error", or an option of the socket (the
// grammars of the languages; Node.js 24 API, "net"; Python 3.14, "socketserver"). One of
// them anywhere in a file is enough to say nothing.
var caring = []string{"catch", "except", "rescue", "'error'", `"error"`, "reuse", "Exception e"}

// taken ends a program that listens twice on one port, where nothing in its code looks
// at what went wrong.
func taken(e *value.Eval, r *trace.Result, env value.Environ) {
	if r.Ended != "" || r.Reason != "" || r.Forks || len(r.Calls) < 2 || len(r.Calls) > 8 {
		return
	}
	type bound struct {
		c   trace.Call
		out fact.Outcome
	}
	var all []bound
	for _, c := range r.Calls {
		for _, w := range caring {
			if strings.Contains(string(c.File.Src), w) {
				return
			}
		}
		for _, l := range listeners(e, c) {
			if !alone[l.Server] {
				return
			}
			out := l.Under(env)
			if out.Outcome != "listens" || out.Port <= 0 || out.Interface != "any" && out.Interface != "loopback" {
				continue
			}
			for _, b := range all {
				if b.c.At != c.At && b.out.Port == out.Port && (b.out.Interface == out.Interface || b.out.Interface == "any" || out.Interface == "any") {
					r.Ended = "it listens on the port " + strconv.Itoa(out.Port) + " twice"
					r.Calls = nil
					return
				}
			}
			all = append(all, bound{c, out})
		}
	}
}

// cameTo is what a listener did in a program that was followed: it is the one at
// a place of several.
func cameTo(e *value.Eval, r *trace.Result, l *fact.Listener, env value.Environ, which, several int) (fact.Outcome, bool) {
	var outs []fact.Outcome
	var open fact.Outcome
	for _, c := range r.Calls {
		if c.At != l.At {
			continue
		}
		for _, x := range listeners(e, c) {
			x.Spare, x.Commanded = l.Spare, l.Commanded // what the command line of Bun says stands in
			o := x.Under(env)
			if o.Outcome == "unknown" || o.Interface == "unknown" {
				given := blanks(append(slices.Collect(maps.Values(c.Keys)), append(c.Args, c.Recv)...))
				for _, why := range blanks([]*value.Value{x.Port, x.Host, x.Bind}) {
					if open.Outcome == "" && slices.Contains(given, why) {
						open = fact.Outcome{Outcome: "unknown", Interface: "unknown", Port: -1, Reason: why}
					}
				}
			}
			outs = append(outs, o)
		}
	}
	switch {
	case len(outs) == 0 && r.Undecided:
		return fact.Outcome{Outcome: "unknown", Interface: "unknown", Port: -1, Reason: r.Reason}, false
	case len(outs) == 0 && r.Reason != "":
		return fact.Outcome{}, false
	case r.Ended != "":
		return fact.Outcome{Outcome: "exits", Interface: "", Port: -1, Reason: r.Ended}, true
	case len(outs) == 0 && (r.Waiting && len(r.Calls) == 0):
		return fact.Outcome{}, false
	case len(outs) <= which && several > 1 && r.Reason != "":
		return fact.Outcome{}, false
	case len(outs) == 0, len(outs) <= which && several > 1 && len(outs) > 0:
		return fact.Outcome{Outcome: "skipped", Interface: "", Port: -1, Reason: "the program does not come to it"}, true
	case which < len(outs) && several > 1:
		return known(outs[which])
	case open.Outcome != "" && !r.CalledBack:
		return open, false
	}
	for _, o := range outs[1:] {
		if o != outs[0] {
			return fact.Outcome{}, false
		}
	}
	return known(outs[0])
}

// blanks are the reasons of what is not known in values.
func blanks(values []*value.Value) (list []string) {
	var look func(values []*value.Value, depth int)
	look = func(values []*value.Value, depth int) {
		for _, v := range values {
			if v == nil || depth > 6 || len(list) > 64 {
				continue
			}
			if v.Kind == value.Unknown {
				list = append(list, v.Text)
			}
			look(v.Kids, depth+1)
		}
	}
	look(values, 0)
	return list
}

func nothing(v *value.Value) bool {
	return v == nil || v.Kind == value.Undef || v.Kind == value.Null
}

// whileRead begins the reason where settings end a server.
const whileRead = "the server ends while it reads "

// ended is why something that was gone through certainly ended, behind what it was; empty
// where it did not.
func ended(r *trace.Result, what string) string {
	if r.Ended == "" || r.Reason != "" {
		return ""
	}
	return what + ": " + r.Ended
}

// endsFirst lets what runs before a listener end the program: why gives the reason in an
// environment, and nothing where it goes on.
func endsFirst(l *fact.Listener, why func(value.Environ) string) {
	further := l.Follow
	l.Follow = func(env value.Environ) (fact.Outcome, bool) {
		if reason := why(env); reason != "" {
			return fact.Outcome{Outcome: "exits", Port: -1, Reason: reason}, true
		}
		if further != nil {
			return further(env)
		}
		return fact.Outcome{}, false
	}
}

// known hands on what an outcome says where it says all.
func known(o fact.Outcome) (fact.Outcome, bool) {
	if o.Outcome == "unknown" && strings.HasPrefix(o.Reason, fact.NamesHost) { // it is known what it is given
		return o, true
	}
	if o.Outcome == "unknown" || o.Interface == "unknown" { // of a library that the values know
		return fact.Outcome{Outcome: fact.CameTo, Reason: o.Reason}, false
	}
	return o, true
}
