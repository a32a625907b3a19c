package port

import (
	"fmt"

	"ubique/core/rules"
	"ubique/core/value"
)

// home is the environment in which nobody gives a port: where the host does,
// that is the developer's own machine, without what only hosts set.
func home(on *rules.On) value.Environ {
	if on.Host.Port.How == "declared" {
		return on.Env
	}
	set := map[string]string{}
	for k, v := range on.Env.Set {
		if _, own := on.Code.Env[k]; own || on.Host.Sets[k] != v {
			set[k] = v
		}
	}
	return value.Environ{Set: set}
}

var noFallback = &rules.Rule{
	ID: "port/no-fallback", Level: rules.Advice, Title: "no port when the variable is not set", Doc: doc("no-fallback"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			v := judge(on)
			l := v.listener
			if l == nil || v.rule != "" || l.Via != "code" && l.Via != "setting" {
				continue
			}
			bare := l.Under(home(on))
			if !(bare.Outcome == "exits" || bare.Outcome == "listens" && bare.Port == 0) {
				continue
			}
			if other, ok := l.Denied(home(on), bare); ok && other.Port > 0 { // what it does counts
				continue
			}
			vars := l.Decides(home(on))
			if len(vars) == 0 {
				continue
			}
			name := vars[0].Text
			at := vars[0].At
			if at.Line == 0 {
				at = l.PortAt
			}
			if on.Host.Port.How != "declared" && on.Code.Source == "process file" && on.Code.At.File == at.File { // the command names it, which only the host runs
				continue
			}
			what := "the program ends at start"
			if bare.Outcome == "listens" {
				what = "it listens on a port that nobody knows"
			}
			level := rules.Advice
			if on.Host.Port.How == "declared" {
				level = rules.Blocker // nothing sets the variable there
			}
			f := rules.Finding{Where: at, Trail: trail(l, portValue(l)), Message: fmt.Sprintf("%s has no fallback: where it is not set, %s", name, what)}
			v.variable = vars[0]
			v.outcome.Port = 0
			f.Remedy = instead(v, name)
			p.Report(on, level, led(l, f))
		}
	},
}
