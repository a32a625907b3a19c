package start

import (
	"fmt"

	"ubique/core/rules"
)

var signal = &rules.Rule{
	ID: "start/signal", Level: rules.Risk, Title: "the first process does not hand signals on", Doc: doc("signal"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Host.Route != "image" || on.Start.Source != "container" {
				continue
			}
			f := on.Start.Final
			h := f.Holds
			if h == nil || f.Reason != "" || f.Missing != nil || f.Back {
				continue
			}
			x := rules.Finding{Where: h.At, Trail: f.Steps}
			switch h.Kind {
			case "runner":
				x.Message = fmt.Sprintf("%s is the first process of the container and does not hand SIGTERM on: %s is killed in the middle of its requests when the host stops it", h.Name, f.Program)
				x.Remedy = "the program itself: " + written(on)
			case "script":
				x.Message = fmt.Sprintf("%s starts %s without exec and stays the first process of the container: SIGTERM does not reach %s", h.Name, f.Program, f.Program)
				x.Remedy = "exec " + written(on)
			default:
				x.Message = fmt.Sprintf("a shell with several commands stays the first process of the container: SIGTERM does not reach %s", f.Program)
				x.Remedy = "exec " + written(on)
			}
			p.Report(on, 0, x)
		}
	},
}

// written is the program and what it is given, as the tree writes it.
func written(on *rules.On) string {
	f := on.Start.Final
	text := f.Path
	if f.Via != "" {
		text = f.Via + " -m " + f.Path
	}
	for _, a := range f.Args {
		if len(text) > 80 {
			return text + " …"
		}
		text += " " + a.Text
	}
	return text
}
