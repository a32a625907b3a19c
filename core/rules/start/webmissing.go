package start

import (
	"fmt"
	"strings"

	"ubique/core/rules"
)

var webMissing = &rules.Rule{
	ID: "start/web-missing", Level: rules.Blocker, Title: "a process file without the process that is reached", Doc: doc("web-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if !on.Host.WebRequired {
				continue
			}
			for _, d := range p.Component.Descriptors {
				if d.Format != "process file" || d.Err != nil || len(d.Procs) == 0 {
					continue
				}
				var names []string
				has := false
				for _, x := range d.Procs {
					names = append(names, x.Name)
					has = has || x.Name == on.Host.Process
				}
				if has {
					continue
				}
				pr := d.Procs[0]
				for _, x := range d.Procs {
					if strings.EqualFold(x.Name, on.Host.Process) {
						pr = x
					}
				}
				p.Report(on, 0, rules.Finding{Where: pr.NameAt, Message: fmt.Sprintf("%s has the processes %s and no %s, the only one that this host reaches from outside", d.File, strings.Join(names, ", "), on.Host.Process), Remedy: on.Host.Process + ": " + pr.Command})
			}
		}
	},
}
