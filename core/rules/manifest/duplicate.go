package manifest

import (
	"fmt"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

var duplicate = &rules.Rule{
	ID: "manifest/duplicate", Level: rules.Risk, Title: "declared twice with different versions", Doc: doc("duplicate"),
	Check: func(p *rules.Pass) {
		first := map[string]fact.Dependency{}
		for _, d := range p.Component.Dependencies {
			if d.Optional || d.Marker != "" || d.Group == "workspace root" || d.Group == "peerDependencies" {
				continue
			}
			o, ok := first[d.Name]
			if !ok {
				first[d.Name] = d
				continue
			}
			if same(o, d) || o.File != d.File && (o.Dev || d.Dev) {
				continue
			}
			level := rules.Risk
			if o.Known && d.Known && o.Set.Intersect(d.Set).Empty() && p.Component.Runtime == "python" {
				level = rules.Blocker // pip refuses
			}
			p.ReportAll(level, rules.Finding{
				Where:   d.At,
				Message: fmt.Sprintf("%s is declared as %s here and as %s in line %d: which one counts depends on who reads it", d.Name, spec(d), spec(o), o.At.Line),
				Trail:   []value.Step{{At: o.At, Note: "declared as " + spec(o)}},
				Remedy:  "keep one of the two lines",
			})
		}
	},
}

// same reports whether two declarations ask for the same versions.
func same(a, b fact.Dependency) bool {
	if a.Spec == b.Spec {
		return true
	}
	return a.Known && b.Known && a.Set.String() == b.Set.String()
}
