package ship

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/rules"
)

var absolutePath = &rules.Rule{
	ID: "ship/absolute-path", Level: rules.Risk, Title: "a path of one person's machine", Doc: doc("absolute-path"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			seen := map[string]bool{}
			for _, x := range on.Code.Personal {
				if seen[x.At.String()] {
					continue
				}
				seen[x.At.String()] = true
				rest := strings.TrimRight(strings.ReplaceAll(x.Text, `\`, "/"), "/")
				p.Report(on, 0, rules.Finding{Where: x.At, Message: fmt.Sprintf("%s is a path of one machine: no host has it", x.Text), Remedy: fmt.Sprintf("a path from the program's own folder (%s), or a variable of the environment", path.Base(rest))})
			}
		}
	},
}
