package ship

import (
	"fmt"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/value"
)

var untracked = &rules.Rule{
	ID: "ship/untracked", Level: rules.Blocker, Title: "needed, but git does not track it", Doc: doc("untracked"),
	Check: func(p *rules.Pass) {
		withheld(p, source.Untracked, func(on *rules.On, n need) {
			if e, ok := p.Tree.Fold(n.file); ok && e.Tracked {
				return // ship/case: git has it under another name
			}
			p.Report(on, 0, rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which is on this disk and not in git: the host does not get it", n.file), Trail: []value.Step{{At: place.Span{File: n.file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Note: "not tracked"}}, Remedy: "git add " + n.file})
		})
	},
}
