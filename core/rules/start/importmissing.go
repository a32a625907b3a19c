package start

import (
	"fmt"
	"strings"

	"ubique/core/rules"
)

var importMissing = &rules.Rule{
	ID: "start/import-missing", Level: rules.Blocker, Title: "code that starts imports a file that is nowhere", Doc: doc("import-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			seen := map[string]bool{}
			for _, i := range on.Code.Imports {
				if !i.Missing || i.Case != "" || i.TypeOnly || i.Optional || seen[i.Module+i.From] || strings.ContainsAny(i.Module, "*") {
					continue
				}
				seen[i.Module+i.From] = true
				p.Report(on, 0, rules.Finding{Where: i.At, Message: fmt.Sprintf("imports %s, and there is no such file seen from %s", i.Module, i.From), Remedy: "the path of the file that is meant, or the file itself"})
			}
		}
	},
}
