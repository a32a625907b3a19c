package port

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

var privileged = &rules.Rule{
	ID: "port/privileged", Level: rules.Blocker, Title: "a port below 1024 without the right to it", Doc: doc("privileged"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil {
				continue
			}
			im := on.Start.Descriptor.Image
			user, _, _ := strings.Cut(im.User, ":")
			if user == "" || user == "root" || user == "0" || strings.Contains(user, "$") || hasRight(im) {
				continue
			}
			for _, l := range on.Start.Listeners {
				out := l.Under(on.Ported)
				if l.Dev || out.Outcome != "listens" || out.Port <= 0 || out.Port >= 1024 || strings.HasPrefix(out.Interface, "unix:") {
					continue
				}
				f := rules.Finding{Where: where(on, l), Trail: append(trail(l, portValue(l)), rules.Step(im.UserAt, "runs as "+user)),
					Message: fmt.Sprintf("%s listens on %d as the user %s; the kernel keeps ports below 1024 for root", program(on), out.Port, user),
					Remedy:  fmt.Sprint(out.Port + 8000)}
				if f.Where.Line == 0 {
					f.Where = on.Start.At
				}
				p.Report(on, 0, f)
				break
			}
		}
	},
}

// hasRight reports whether an image gives a program the right to low ports.
func hasRight(im *fact.Image) bool {
	for _, r := range im.Runs {
		if strings.Contains(strings.ToLower(r.Text), "cap_net_bind_service") || strings.Contains(r.Text, "authbind") || strings.Contains(r.Text, "ip_unprivileged_port_start") {
			return true
		}
	}
	for _, b := range im.Bases { // a variant that is made for it
		if b.Final && strings.Contains(b.Name, "unprivileged") {
			return true
		}
	}
	return false
}
