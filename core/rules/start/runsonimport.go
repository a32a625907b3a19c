package start

import (
	"fmt"

	"ubique/core/command"
	"ubique/core/rules"
	"ubique/core/survey"
)

var runsOnImport = &rules.Rule{
	ID: "start/runs-on-import", Level: rules.Blocker, Title: "a server starts while its module is imported", Doc: doc("runs-on-import"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			s := on.Start
			if s == nil || s.Target == nil || s.Target.Kind != command.CallableTarget || s.Program == nil || s.Target.File == "" {
				continue
			}
			for _, l := range survey.Inner(s) {
				if o := l.Under(on.Ported); o.Outcome != "listens" {
					continue
				}
				p.Report(on, 0, rules.Finding{
					Where:   l.At,
					Trail:   append(s.Final.Steps[:len(s.Final.Steps):len(s.Final.Steps)], rules.Step(s.Target.At, s.Final.Program+" imports it")),
					Message: fmt.Sprintf("%s imports this module, and a server is started while it is: the import does not return", s.Final.Program),
					Remedy:  `if __name__ == "__main__":`,
				})
				break
			}
		}
	},
}
