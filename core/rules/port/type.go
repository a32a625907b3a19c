package port

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

var wrongType = &rules.Rule{
	ID: "port/type", Level: rules.Blocker, Title: "the port is no number that the server takes", Doc: doc("type"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil || on.Code.Final.Missing != nil {
				continue
			}
			for _, l := range on.Code.Listeners {
				if l.Dev || one(on, l).rule != "" {
					continue
				}
				why, out, ok := mistyped(l, given(on, l))
				if !ok || elsewhere(l, given(on, l), out) {
					continue
				}
				f := rules.Finding{Where: typeAt(on, l), Trail: trail(l, portValue(l))}
				then := "the program ends at start"
				if out.Outcome == "listens" {
					then = "it listens on a socket of that name in the file system, which nobody reaches"
				}
				f.Message = fmt.Sprintf("the port is given, and %s: %s", why, then)
				f.Remedy = converted(l, on)
				p.Report(on, 0, led(l, f))
				break
			}
		}
	},
}

// given is the environment of a host with a good port in every variable that
// decides it.
func given(on *rules.On, l *fact.Listener) value.Environ {
	if on.Port > 0 {
		return on.Ported
	}
	set := map[string]string{}
	for _, v := range l.PortVariables() {
		if _, has := on.Env.Lookup(v.Text, v.Fold); !has {
			set[v.Text] = "51423"
		}
	}
	return on.Env.With(set)
}

// elsewhere reports whether the way to a listener makes another value of its port
// than the one that is wrong, or does not lead there.
func elsewhere(l *fact.Listener, env value.Environ, told fact.Outcome) bool {
	if l.Follow == nil {
		return false
	}
	out, ok := l.Follow(env)
	return ok && (out.Outcome == "skipped" || out.Outcome == "listens" && told.Outcome == "exits")
}

// mistyped says what is wrong with a port that was given.
func mistyped(l *fact.Listener, env value.Environ) (why string, out fact.Outcome, ok bool) {
	v := portValue(l)
	if v == nil || l.Missing {
		return "", out, false
	}
	out = l.Under(env)
	o := v.Under(env)
	switch {
	case out.Outcome == "exits" && o.Raise:
		if strings.HasSuffix(o.Text, " is not set") {
			return "", out, false
		}
		return o.Text, out, true
	case out.Outcome == "exits" && o.Known():
		if o.Kind == value.Null || o.Kind == value.Undef || o.Kind == value.External || strings.HasPrefix(out.Reason, "the program ends") || strings.HasPrefix(out.Reason, "the host") {
			return "", out, false
		}
		if o.Kind == value.Str && strings.Contains(o.Text, "$") {
			return "", out, false // port/unexpanded
		}
		return out.Reason, out, true
	case out.Outcome == "listens" && strings.HasPrefix(out.Interface, "unix:") && o.Kind == value.Str && l.Bind == nil:
		if strings.ContainsAny(o.Text, "/\\") || strings.HasSuffix(o.Text, ".sock") || !strings.ContainsAny(o.Text, "0123456789") {
			return "", out, false // a socket that is meant
		}
		return fmt.Sprintf("what the server gets is the text %q", o.Text), out, true
	}
	return "", out, false
}

// typeAt is where the value becomes what it should not be.
func typeAt(on *rules.On, l *fact.Listener) place.Span {
	if l.Bind != nil {
		return l.PortAt
	}
	if m := l.Port.Made(given(on, l)); m != nil && m.At.Line > 0 && m.Kind != value.Unknown {
		return m.At
	}
	return l.PortAt
}

// converted is the same read with a number made of it.
func converted(l *fact.Listener, on *rules.On) string {
	name := on.Host.Port.Variable
	if name == "" {
		name = "PORT"
	}
	if l.Bind != nil && path.Ext(l.At.File) == ".go" {
		return fmt.Sprintf(`":" + os.Getenv("%s")`, name)
	}
	if path.Ext(l.At.File) == ".js" || path.Ext(l.At.File) == ".ts" || path.Ext(l.At.File) == ".mjs" {
		return fmt.Sprintf("Number(process.env.%s) || 3000", name)
	}
	return read(l.PortAt.File, l, name, 0)
}
