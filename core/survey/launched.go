package survey

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/trace"
	"ubique/core/value"
)

// Programs that a program starts, and what these listen on: a script of Python that runs
// gunicorn, a file of Node.js that starts another server.

// maxNested is how many programs are followed, one started by another.
const maxNested = 2

// launcher follows the programs that those of one start have started.
type launcher struct {
	s   *Starter
	st  *fact.Start
	b   Beginning
	had map[string]*fact.Start
}

// begun is a program that was started, and the environment that it was given.
type begun struct {
	at  place.Span
	st  *fact.Start
	env value.Environ
}

// start follows a command that a program starts; nil where no program that is known is
// started.
func (x *launcher) start(l value.Launch, env value.Environ) (b begun, ok bool) {
	env = value.Environ{Set: l.Env, Vague: env.Vague, Worker: false}
	var line command.Line
	var said []string
	if l.Words != nil {
		c := command.Simple{At: l.At}
		for _, v := range l.Words {
			text := v.Text
			if v.Kind != value.Str {
				text = "…"
			}
			said = append(said, text)
			c.Words = append(c.Words, command.Word{Value: v, Text: text, At: l.At, Single: true})
		}
		line = command.Line{Commands: []command.Simple{c}, Exec: true}
	} else {
		said = []string{l.Line}
		var err error
		if line, err = command.Parse(l.Line, l.At); err != nil {
			return begun{}, false
		}
	}
	key := fmt.Sprint(l.At, "\x00", l.Dir)
	for _, w := range said {
		key += "\x00" + w
	}
	for _, v := range l.Words {
		key += "\x00" + v.String()
	}
	for _, k := range slices.Sorted(maps.Keys(l.Env)) {
		key += "\x00" + k + "=" + l.Env[k]
	}
	st, known := x.had[key]
	if !known {
		next := *x.s
		next.nested++
		next.With = l.Env
		st = next.Start(Beginning{Process: x.st.Process, Command: strings.Join(said, " "), Source: x.st.Source, File: x.st.File, At: l.At, Line: line, Dir: l.Dir, InImage: x.b.InImage, Descriptor: x.st.Descriptor})
		if st.Final.Reason != "" || st.Final.Missing != nil {
			st.Listeners = nil
		}
		if st.More != nil {
			st.More(env)
		}
		if len(x.had) < 32 {
			x.had[key] = st
		}
	}
	return begun{l.At, st, env}, len(st.Listeners) > 0
}

// run goes through a program, and notes which others it starts.
func (x *launcher) run(e *value.Eval, env value.Environ, through func() trace.Result) trace.Result {
	if x.s.nested >= maxNested {
		return through()
	}
	var list []begun
	e.Launch = func(l value.Launch) bool {
		b, ok := x.start(l, env)
		if !ok {
			return false
		}
		list = append(list, b)
		return slices.ContainsFunc(b.st.Listeners, func(l *fact.Listener) bool {
			o := l.Under(b.env).Outcome
			return o == "listens" || o == "unknown"
		})
	}
	r := through()
	e.Launch = nil
	r.Launched = make([]any, len(list))
	for i, b := range list {
		r.Launched[i] = b
	}
	return r
}

// nth is a listener of the programs that one starts: the k-th of the n-th that it starts
// at a place.
type nth struct {
	at   place.Span
	n, k int
}

// each goes over the listeners of the programs that a program has started.
func each(r *trace.Result, do func(at nth, b begun, l *fact.Listener)) {
	times := map[place.Span]int{}
	for _, v := range r.Launched {
		b, ok := v.(begun)
		if !ok {
			continue
		}
		for k, l := range b.st.Listeners {
			do(nth{b.at, times[b.at], k}, b, l)
		}
		times[b.at]++
	}
}

// listeners adds those of the programs that a program has started, which its own do not
// have yet.
func (x *launcher) listeners(have map[nth]bool, run func(value.Environ) *trace.Result, results ...*trace.Result) {
	for _, r := range results {
		each(r, func(at nth, b begun, other *fact.Listener) {
			if have[at] {
				return
			}
			have[at] = true
			why := value.NotKnown("a value that is made while the program runs", at.at)
			l := &fact.Listener{Process: x.st.Process, Server: other.Server, Via: "code", At: at.at, PortAt: at.at, HostAt: at.at, Port: why, Host: why, Dev: other.Dev, Met: true, Ended: x.st.Final.Ends}
			l.Follow = func(env value.Environ) (fact.Outcome, bool) { return launchedUnder(run(env), at) }
			l.Asked = func() []*value.Value { return run(value.Environ{}).Reads }
			x.st.Listeners = append(x.st.Listeners, l)
			for _, v := range b.st.Variables {
				if !slices.ContainsFunc(x.st.Variables, func(w fact.Variable) bool { return w.Name == v.Name && w.At == v.At }) {
					x.st.Variables = append(x.st.Variables, v)
				}
			}
		})
	}
}

// launchedUnder is what became of a listener of a program that was started.
func launchedUnder(r *trace.Result, at nth) (out fact.Outcome, ok bool) {
	found := false
	each(r, func(other nth, b begun, l *fact.Listener) {
		if other == at {
			found, out = true, l.Under(b.env)
		}
	})
	switch {
	case found && r.Ended != "" && r.Reason == "":
		return fact.Outcome{Outcome: "exits", Port: -1, Reason: r.Ended}, true
	case found:
		return out, out.Outcome != "unknown"
	case r.Reason != "":
		return fact.Outcome{Outcome: "unknown", Interface: "unknown", Port: -1, Reason: r.Reason}, false
	case r.Ended != "":
		return fact.Outcome{Outcome: "exits", Port: -1, Reason: r.Ended}, true
	}
	return fact.Outcome{Outcome: "skipped", Port: -1, Reason: "the program does not come to it"}, true
}
