package port

import (
	"fmt"
	"strings"

	"ubique/core/rules"
)

var mismatch = &rules.Rule{
	ID: "port/mismatch", Level: rules.Blocker, Title: "the declared port is not the one that is listened on", Doc: doc("mismatch"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			mismapped(p, on)
			if on.Host.Port.How != "declared" || on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil || len(on.Start.Descriptor.Image.Expose) == 0 || fronted(on) {
				continue
			}
			var served []string
			var bad []rules.Finding
			exposed := on.Start.Descriptor.Image.Expose
			known := false
			for _, l := range on.Start.Listeners {
				if l.Dev {
					continue
				}
				out := l.Under(on.Env)
				if out.Outcome == "unknown" || strings.HasPrefix(out.Interface, "unix:") {
					known = false
					served = nil
					bad = nil
					break
				}
				if out.Outcome != "listens" || out.Port <= 0 {
					continue
				}
				known = true
				for _, e := range exposed {
					if e.Port == out.Port {
						served = append(served, fmt.Sprint(e.Port))
					}
				}
				f := rules.Finding{
					Where:   exposed[0].At,
					Message: fmt.Sprintf("declares port %d, but %s listens on %d", exposed[0].Port, program(on), out.Port),
					Remedy:  fmt.Sprintf("EXPOSE %d", out.Port),
					Trail:   trail(l, portValue(l)),
				}
				if f.Trail == nil {
					f.Trail = append(f.Trail, rules.Step(l.At, "listens here"))
				}
				bad = append(bad, f)
			}
			if known && len(served) == 0 && len(bad) > 0 {
				p.Report(on, 0, bad[0])
			}
		}
	},
}
