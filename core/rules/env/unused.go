package env

import (
	"fmt"
	"slices"

	"ubique/core/rules"
	"ubique/core/survey"
)

var unused = &rules.Rule{
	ID: "env/unused", Level: rules.Advice, Title: "a variable is declared that nothing reads", Doc: doc("unused"),
	Check: func(p *rules.Pass) {
		if len(p.Component.Declared) == 0 || len(p.On) == 0 || slices.Contains(p.Component.Frameworks, "Laravel") || slices.Contains(p.Component.Frameworks, "Symfony") {
			return // these read much of what stands in their example
		}
		read := map[string]bool{}
		any := false
		for _, st := range p.Component.Starts {
			any = any || len(st.Reached) > 0
			for _, v := range st.Variables {
				read[v.Name] = true
			}
		}
		if !any {
			return // the code is not known
		}
		misses := map[string]bool{}
		for _, on := range p.On {
			_, byDeclared := near(p, on)
			for n := range byDeclared {
				misses[n] = true
			}
		}
		for _, d := range p.Component.Declared {
			if d.How != "dotenv example" || !d.Valid || read[d.Name] || misses[d.Name] || survey.Consumed(d.Name) || survey.Mentioned(p.Tree, p.Component, d.Name) {
				continue
			}
			if p.Component.Dir != "" && !below(p.Component.Dir, d.At.File) {
				continue // an example for several components
			}
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("declares %s, which nothing of the component reads", d.Name), Remedy: "the file without this line"})
		}
	},
}

func below(dir, file string) bool { return len(file) > len(dir) && file[:len(dir)+1] == dir+"/" }
