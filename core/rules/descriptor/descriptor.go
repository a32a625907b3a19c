// Package descriptor holds the rules on files that tell hosts what to do.
package descriptor

import (
	"ubique/core/rules"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{unreadable}

var unreadable = &rules.Rule{
	ID: "descriptor/unreadable", Level: rules.Blocker, Title: "a descriptor or manifest cannot be read", Doc: doc("unreadable"),
	Tree: func(p *rules.TreePass) {
		for _, d := range p.Broken {
			p.Report(0, d.Route, rules.Finding{Where: d.Err.At, Message: d.Err.Expected, Remedy: "what the format allows at this place"})
		}
	},
}
