package descriptor

import (
	"ubique/core/rules"
)

var unreadable = &rules.Rule{
	ID: "descriptor/unreadable", Level: rules.Blocker, Title: "a descriptor or manifest cannot be read", Doc: doc("unreadable"),
	Tree: func(p *rules.TreePass) {
		for _, d := range p.Broken {
			p.Report(0, d.Route, rules.Finding{Where: d.Err.At, Message: d.Err.Expected, Remedy: "what the format allows at this place"})
		}
	},
}
