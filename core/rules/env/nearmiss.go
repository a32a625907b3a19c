package env

import (
	"fmt"
	"slices"

	"ubique/core/rules"
)

var nearMiss = &rules.Rule{
	ID: "env/near-miss", Level: rules.Risk, Title: "a variable is declared and read under names one slip apart", Doc: doc("near-miss"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			names, at := reads(on)
			if len(names) == 0 {
				continue
			}
			pairs, _ := near(p, on)
			for _, n := range names {
				d, ok := pairs[n]
				if !ok || slices.Contains(names, d.Name) {
					continue
				}
				f := rules.Finding{Where: d.At, Remedy: n, Message: fmt.Sprintf("declares %s, and the code reads %s: what is set under the one name is not found under the other", d.Name, n)}
				for _, v := range at[n] {
					f.Trail = append(f.Trail, rules.Step(v.At, "reads "+n))
					if len(f.Trail) == 3 {
						break
					}
				}
				p.Report(on, 0, f)
			}
		}
	},
}
