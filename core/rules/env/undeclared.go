package env

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

var undeclared = &rules.Rule{
	ID: "env/undeclared", Level: rules.Risk, Title: "a variable is read that nothing declares", Doc: doc("undeclared"),
	Check: func(p *rules.Pass) {
		says := declared(p)
		for _, on := range p.On {
			names, at := reads(on)
			if len(names) == 0 {
				continue
			}
			pairs, _ := near(p, on)
			decides := port(on)
			for _, n := range names {
				if _, ok := says[n]; ok || known(on, n) || decides[n] {
					continue
				}
				if _, ok := pairs[n]; ok {
					continue // env/near-miss
				}
				required, free := -1, false
				for i, v := range at[n] {
					free = free || v.HasFall || v.Tested
					if v.Required && required < 0 {
						required = i
					}
				}
				if !free && (required >= 0 || turns(n)) && on.Code.Copes != nil && on.Code.Copes(on.Ported, n) {
					continue // what it raises is caught, or it goes its own way without it
				}
				if free {
					if on.Code.Needs == nil || !on.Code.Needs(on.Ported, n) {
						continue
					}
					required = max(required, 0) // what it does without it counts
				}
				level, first := rules.Advice, at[n][0]
				then := "it is empty there"
				if required >= 0 {
					level, first = rules.Risk, at[n][required]
					then = "the program ends there"
				}
				if required < 0 && moves(on, n) {
					continue
				}
				f := rules.Finding{Where: first.At, Remedy: n + "=", Message: fmt.Sprintf("reads %s without a fallback, and no file of the tree says that it is needed: who sets the host up does not know of it, and %s", n, then)}
				for _, v := range at[n] {
					if v.At != first.At && len(f.Trail) < 4 {
						f.Trail = append(f.Trail, rules.Step(v.At, "reads it too"))
					}
				}
				f.Remedy = n + "=   in .env.example"
				p.Report(on, level, f)
			}
		}
	},
}

// turnWords are parts of the names of variables that change how a program runs, and
// that it can do without where it listens without them.
var turnWords = []string{"PORT", "HOST", "ADDR", "BIND", "LISTEN", "INTERFACE", "MODE", "PROFILE", "STAGE", "DEBUG", "VERBOSE", "LEVEL", "TIER", "TIMEOUT", "WORKERS", "THREADS", "CONCURRENCY", "LIMIT", "TELEMETRY"}

// turns reports whether a name is that of such a variable.
func turns(name string) bool {
	for _, part := range strings.FieldsFunc(strings.ToUpper(name), func(c rune) bool { return c == '_' || c == '-' }) {
		if slices.Contains(turnWords, part) {
			return true
		}
	}
	return false
}

// addressWords are parts of the names that variables for an interface have.
var addressWords = []string{"HOST", "ADDR", "BIND", "LISTEN", "INTERFACE", "IP"}

// moves reports whether a variable decides on which interface the process listens, as
// going through the program tells.
func moves(on *rules.On, name string) bool {
	if !slices.ContainsFunc(addressWords, func(w string) bool { return strings.Contains(strings.ToUpper(name), w) }) {
		return false
	}
	return slices.ContainsFunc(on.Code.Listeners, func(l *fact.Listener) bool {
		if l.Follow == nil {
			return false
		}
		out, ok := l.Follow(on.Ported)
		other, also := l.Follow(on.Ported.With(map[string]string{name: "127.0.0.1"}))
		return ok && also && out.Outcome == "listens" && other.Outcome == "listens" && out.Interface != other.Interface
	})
}

// port are the variables that decide where the process listens: the port rules
// speak of them. One for the interface counts where it listens without it.
func port(on *rules.On) map[string]bool {
	m := map[string]bool{}
	for _, l := range on.Code.Listeners {
		for _, v := range l.PortVariables() {
			m[v.Text] = true
		}
		if out := l.Under(on.Ported); l.Host != nil && (out.Outcome == "listens" || out.Outcome == "unknown") {
			for _, v := range l.Host.Variables() {
				m[v.Text] = true
			}
		}
	}
	return m
}
