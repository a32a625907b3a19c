package pin

import (
	"fmt"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
	"ubique/core/version"
)

var disagree = &rules.Rule{
	ID: "pin/disagree", Level: rules.Risk, Title: "two pins have no version in common", Doc: doc("disagree"),
	Check: func(p *rules.Pass) {
		var pins []fact.Pin
		for _, x := range p.Component.Pins {
			if x.Known && !x.Set.Empty() {
				pins = append(pins, x)
			}
		}
		all := version.All
		for _, x := range pins {
			all = all.Intersect(x.Set)
		}
		if len(pins) < 2 || !all.Empty() {
			return
		}
		odd, other := oddOne(pins)
		if odd < 0 {
			return
		}
		a, b := pins[odd], pins[other]
		f := rules.Finding{
			Where:   a.At,
			Message: fmt.Sprintf("%s asks for %s %s, %s for %s: no version satisfies both", a.From, label[p.Component.Runtime], a.Text, b.From, b.Text),
			Remedy:  fmt.Sprintf("the version that you run, in both: %s", b.Text),
		}
		for i, x := range pins {
			if i != odd {
				f.Trail = append(f.Trail, value.Step{At: x.At, Note: x.From + ": " + x.Text + " (" + x.Set.String() + ")"})
			}
		}
		for _, on := range p.On {
			level := rules.Risk
			if on.Host.Route == "image" {
				// The container's base runs it; what the manifest demands of
				// the runtime is refused by the manager where it is strict.
				if (a.Rank == 3 || b.Rank == 3) && (a.From == "requires-python" || b.From == "requires-python" || a.From == "poetry python" || b.From == "poetry python") {
					level = rules.Blocker
				} else if a.Rank != 3 && b.Rank != 3 {
					continue
				}
			}
			p.Report(on, level, f)
		}
	},
}

// oddOne finds the pin that the others do not agree with: of three or more
// the one whose absence leaves a version, of two the one further from the
// source code.
func oddOne(pins []fact.Pin) (odd, other int) {
	if len(pins) > 2 {
		for i := range pins {
			rest := version.All
			for j, x := range pins {
				if j != i {
					rest = rest.Intersect(x.Set)
				}
			}
			if !rest.Empty() {
				for j, x := range pins {
					if j != i && x.Set.Intersect(pins[i].Set).Empty() {
						return i, j
					}
				}
			}
		}
	}
	for i := range pins {
		for j := i + 1; j < len(pins); j++ {
			if pins[i].Set.Intersect(pins[j].Set).Empty() {
				if pins[i].Rank > pins[j].Rank {
					return i, j
				}
				return j, i
			}
		}
	}
	return -1, -1
}
