package port

import (
	"slices"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

// verdict is which rule owns the listener on a host: at most one does.
type verdict struct {
	rule     string
	loopback bool // besides, it is reachable from the machine itself only
	listener *fact.Listener
	outcome  fact.Outcome
	variable *value.Value
}

// judge decides, once for all port rules, what is wrong with the listeners of
// the process that a host reaches.
func judge(on *rules.On) verdict {
	if on.Code == nil || on.Code.Final.Missing != nil || fronted(on) {
		return verdict{}
	}
	var worst verdict
	comes := len(on.Code.Listeners) > 1 && slices.ContainsFunc(on.Code.Listeners, func(l *fact.Listener) bool { return followed(on, l) == "listens" })
	for _, l := range on.Code.Listeners {
		if l.Dev { // a development server is start/dev-server alone
			continue
		}
		if comes && followed(on, l) == "skipped" { // it comes to another one
			continue
		}
		v := one(on, l)
		if v.outcome.Outcome == "skipped" {
			continue
		}
		if v.rule == "" && !v.loopback && v.outcome.Outcome == "listens" {
			return verdict{listener: l, outcome: v.outcome}
		}
		if worst.listener == nil || worst.outcome.Interface == "loopback" && v.outcome.Interface == "any" {
			worst = v
		}
	}
	return worst
}

// fronted reports whether the start runs one of them before the program itself.
func fronted(on *rules.On) bool {
	return on.Start != nil && slices.ContainsFunc(on.Start.Final.Before, func(f command.Final) bool {
		return command.Fronts[f.Program] || f.Program == "service" && len(f.Args) > 0 && command.Fronts[f.Args[0].Text]
	})
}

// followed is what going through the program says of a listener on the host; empty
// where it says nothing.
func followed(on *rules.On, l *fact.Listener) string {
	if l.Follow == nil {
		return ""
	}
	out, ok := l.Follow(on.Ported)
	if !ok {
		return ""
	}
	return out.Outcome
}

// one judges a listener. What is wrong by its values alone is not wrong where
// going through the program denies it.
func one(on *rules.On, l *fact.Listener) verdict {
	out := l.Under(on.Ported)
	v := judged(on, l, out)
	if v.rule == "" && !v.loopback {
		if other, ok := l.Denied(on.Ported, out); ok { // what it does counts, not what its values look like
			return judged(on, l, other)
		}
		return v
	}
	if other, ok := l.Denied(on.Ported, out); ok {
		if w := judged(on, l, other); w.rule == "" || v.loopback && !w.loopback {
			return w
		}
	}
	return v
}

func judged(on *rules.On, l *fact.Listener, out fact.Outcome) verdict {
	v := verdict{listener: l, outcome: out}
	v.loopback = out.Outcome == "listens" && on.Host.Reach == "any" && (out.Interface == "loopback" || (l.Bind != nil || l.Via == "setting") && strings.HasPrefix(out.Interface, "unix:"))
	if out.Outcome == "skipped" || out.Outcome == "unknown" {
		return v
	}
	if on.Host.Port.How == "injected" && !(out.Outcome == "listens" && out.Port == on.Port) {
		name := on.Host.Port.Variable
		for _, x := range l.PortVariables() {
			if x.Text != name && strings.EqualFold(x.Text, name) && !x.Fold {
				v.rule, v.variable = "port/name-case", x
				return v
			}
		}
		for _, x := range l.Decides(on.Env) {
			if x.Text != name && strings.EqualFold(x.Text, name) && !x.Fold {
				v.rule, v.variable = "port/name-case", x
				return v
			}
			if x.Text != name && (l.Port != nil || l.Bind != nil) { // a server's own variable is not for hosts to know
				v.rule, v.variable = "port/other-name", x
				return v
			}
		}
		if out.Outcome == "listens" && out.Port >= 0 && (out.Port > 0 || l.Port != nil || l.Bind != nil) && !strings.HasPrefix(out.Interface, "unix:") {
			v.rule = "port/literal"
			return v
		}
		if out.Outcome == "listens" && l.Via == "default" {
			v.rule = "port/literal"
		}
		return v
	}
	return v
}

// trail shows the way from the listening call to the value.
func trail(l *fact.Listener, v *value.Value) []value.Step {
	steps := []value.Step{{At: l.At, Note: "listens here"}}
	if v != nil {
		for _, s := range v.Trail() {
			if s.At.Line != l.At.Line || s.At.File != l.At.File {
				steps = append(steps, s)
			}
		}
	}
	if len(steps) == 1 && !apart(l, v) {
		return nil
	}
	return steps
}

// led is a finding about a listener: where it stands away from the call that listens,
// the trail leads there.
func led(l *fact.Listener, f rules.Finding) rules.Finding {
	if len(f.Trail) == 0 && f.Where.Line > 0 && l.At.Line > 0 && (f.Where.File != l.At.File || f.Where.Line != l.At.Line) {
		f.Trail = []value.Step{{At: l.At, Note: "listens here"}}
	}
	return f
}

// apart reports whether a value is made on another line than the one that listens.
func apart(l *fact.Listener, v *value.Value) bool {
	if v == nil {
		return false
	}
	at := v.Made(value.Environ{}).At
	if at.Line == 0 {
		at = v.At
	}
	return at.Line > 0 && (at.File != l.At.File || at.Line != l.At.Line)
}

func portValue(l *fact.Listener) *value.Value {
	if l.Bind != nil {
		return l.Bind
	}
	return l.Port
}

// where is the place of the wrong text: where the number is written that the
// port comes to on the host.
func where(on *rules.On, l *fact.Listener) place.Span {
	v := portValue(l)
	if v == nil {
		return l.At
	}
	if l.Bind != nil {
		if made := v.MadeLast(on.Ported); (made.Kind == value.Num || made.Kind == value.Str) && made.Last().Line > 0 {
			return made.Last()
		}
	}
	if made := v.Made(on.Ported); (made.Kind == value.Num || made.Kind == value.Str) && made.At.Line > 0 {
		return made.At
	}
	return l.PortAt
}
