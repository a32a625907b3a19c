package pin

import (
	"fmt"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
)

var loose = &rules.Rule{
	ID: "pin/loose", Level: rules.Risk, Title: "a version that another one may take the place of", Doc: doc("loose"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Host.Route == "image" {
				continue // pin/floating-image looks at what runs there
			}
			for _, what := range whats(p.Component) {
				if what != p.Component.Engine() {
					continue // of a package manager the newest is rarely another
				}
				pins := read(p.Component, on, what)
				if all := common(pins); all.Bounded() || all.Empty() {
					continue // narrowed by another, or pin/disagree
				}
				for _, x := range pins {
					if x.Lower || x.Wrong != "" || !x.Alias && (!x.Known || x.Set.Bounded()) {
						continue
					}
					p.Report(on, 0, rules.Finding{
						Where:   x.At,
						Message: fmt.Sprintf("%s asks for %s %s: %s", name(x.From, x.At.File), fact.Label(what), x.Text, means(x)),
						Remedy:  written(x, advised(p.Component, what, p.Today, x)),
					})
				}
			}
		}
	},
}

func means(x fact.Pin) string {
	if x.Alias {
		return "that is another version with each release"
	}
	if x.Rank == survey.RankManifest || x.Rank == survey.RankFile {
		return "without an upper end, so the next major version is taken on the day it comes out"
	}
	return "it has no upper end"
}
