package env

import (
	"fmt"
	"slices"

	"ubique/core/rules"
	"ubique/core/value"
)

var reserved = &rules.Rule{
	ID: "env/reserved", Level: rules.Risk, Title: "a descriptor sets a variable that the host sets", Doc: doc("reserved"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			for _, a := range on.Start.Final.Env {
				if !slices.Contains(on.Host.Reserves, a.Name) || a.Value == nil || mentions(a.Value, a.Name) {
					continue
				}
				p.Report(on, 0, rules.Finding{Where: a.At, Message: fmt.Sprintf("sets %s, which the host sets: what the host gives is lost", a.Name), Remedy: "the command without " + a.Name + "="})
			}
			if d := on.Start.Descriptor; d != nil && d.Image != nil && on.Start.Source == "container" {
				for _, name := range on.Host.Reserves {
					if v, ok := d.Image.Env[name]; ok && v != nil {
						p.Report(on, rules.Advice, rules.Finding{Where: d.Image.EnvAt[name], Message: fmt.Sprintf("sets %s, which the host sets: the host's value counts, and this one only where nothing else does", name), Remedy: "the fallback in the code"})
					}
				}
			}
		}
	},
}

// mentions reports whether a value is made of a variable: X=${X:-1} keeps it.
func mentions(v *value.Value, name string) bool {
	for _, x := range v.Variables() {
		if x.Text == name {
			return true
		}
	}
	return false
}
