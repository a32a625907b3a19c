package port

import (
	"fmt"

	"ubique/core/rules"
	"ubique/core/survey"
)

var nothing = &rules.Rule{
	ID: "port/none", Level: rules.Blocker, Title: "a web process in which nothing listens", Doc: doc("none"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Host.Port.How == "none" || on.Start.Process != "web" || fronted(on) {
				continue
			}
			if on.Start.Descriptor != nil && on.Start.Descriptor.Image != nil && len(on.Start.Descriptor.Image.Expose) == 0 && on.Host.Port.How == "declared" {
				continue // an image of a worker, which exposes nothing
			}
			why, ok := survey.Silent(p.Component, on.Start)
			if !ok {
				continue
			}
			f := rules.Finding{Where: on.Start.Final.At, Trail: on.Start.Final.Steps, Message: fmt.Sprintf("the process that is reached from outside listens nowhere: %s", why), Remedy: "worker: " + on.Start.Command}
			if f.Where.Line == 0 {
				f.Where = on.Start.At
			}
			if t := on.Start.Target; t != nil && t.File != "" {
				if t.At.Line > 0 {
					f.Where = t.At
				}
				if len(why) > 2 && why[:2] == "an" {
					f.Remedy = fmt.Sprintf("a call that listens in %s, on the port of %s", t.File, variableOf(on))
				}
			}
			p.Report(on, 0, f)
		}
	},
}

func variableOf(on *rules.On) string {
	if on.Host.Port.Variable != "" {
		return on.Host.Port.Variable
	}
	return "PORT"
}
