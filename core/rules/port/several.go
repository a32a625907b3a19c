package port

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

var several = &rules.Rule{
	ID: "port/several", Level: rules.Risk, Title: "more public ports than the host routes", Doc: doc("several"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Host.Port.How != "injected" && on.Host.Port.How != "fixed" || len(on.Start.Listeners) < 2 {
				continue
			}
			first := judge(on).listener
			if first == nil {
				continue
			}
			routed := first.Under(on.Ported)
			for _, l := range on.Start.Listeners {
				if followed(on, l) == "skipped" {
					continue
				}
				out := l.Under(on.Ported)
				if l == first || l.Dev || l.At == first.At && l.PortAt == first.PortAt || out.Outcome != "listens" || out.Interface != "any" || out.Port < 0 || !certain(l, on.Ported) || !certain(first, on.Ported) {
					continue
				}
				f := rules.Finding{Where: l.At, Trail: []value.Step{rules.Step(first.At, "the port that the host routes")}}
				level := rules.Risk
				if out.Port == routed.Port && out.Port > 0 {
					if l.Via != "code" || routed.Outcome != "listens" || len(l.Guards)+len(first.Guards) > 0 || l.Shared || first.Shared {
						continue
					}
					level = rules.Blocker
					f.Message = fmt.Sprintf("listens on the same port as %s, line %d: the second one finds the address in use, and the program ends", first.At.File, first.At.Line)
					f.Remedy = "one call that listens"
				} else {
					port := fmt.Sprint(out.Port)
					if out.Port == 0 {
						port = "a port of the kernel's choice"
					}
					f.Message = fmt.Sprintf("opens %s on every interface besides; the host routes one port only", port)
					f.Remedy = `"127.0.0.1" as its interface, or one server for both`
				}
				p.Report(on, level, f)
			}
		}
	},
}

// certain reports whether a listener opens its port whatever happens.
func certain(l *fact.Listener, env value.Environ) bool {
	for _, g := range l.Guards {
		if yes, ok := g.Under(env).Truth(false); !ok || !yes {
			return false
		}
	}
	return !strings.HasPrefix(l.Under(env).Interface, "unix:")
}
