package pin

import (
	"fmt"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/value"
	"ubique/core/version"
)

var disagree = &rules.Rule{
	ID: "pin/disagree", Level: rules.Risk, Title: "two pins have no version in common", Doc: doc("disagree"),
	Check: func(p *rules.Pass) {
		for _, what := range whats(p.Component) {
			quarrel(p, what)
		}
	},
}

// strict are the pins by which a runtime or a package manager refuses to run.
// Source: pip, Poetry, uv, Composer, Bundler, Maven, Cargo and the Go command
// each check them; npm only warns.
var strict = map[string]bool{"requires-python": true, "poetry python": true, "composer require": true, "Gemfile": true, "go.mod": true, "rust-version": true, "java.version": true, "compiler release": true, "enforcer": true, "TargetFramework": true, "mix.exs": true}

func quarrel(p *rules.Pass, what string) {
	var pins []fact.Pin
	for _, x := range p.Component.Pins {
		if x.What == what && x.Known && x.Wrong == "" && !x.Set.Empty() {
			pins = append(pins, x)
		}
	}
	if len(pins) < 2 || !common(pins).Empty() {
		return
	}
	odd, other := oddOne(pins)
	if odd < 0 {
		return
	}
	a, b := pins[odd], pins[other]
	f := rules.Finding{
		Where:   a.At,
		Message: fmt.Sprintf("%s asks for %s %s, %s for %s: no version satisfies both", name(a.From, a.At.File), fact.Label(what), a.Text, name(b.From, b.At.File), b.Text),
		Remedy:  fmt.Sprintf("the version that you run, in both: %s", b.Text),
	}
	rest := append(append([]fact.Pin(nil), pins[:odd]...), pins[odd+1:]...)
	if left := common(rest); len(rest) > 1 && !left.Empty() {
		f.Message += fmt.Sprintf(" (without it the others leave %s)", left)
		f.Remedy = "what the others leave: " + left.String()
	}
	for _, x := range rest {
		f.Trail = append(f.Trail, value.Step{At: x.At, Note: name(x.From, x.At.File) + ": " + x.Text + " (" + x.Set.String() + ")"})
	}
	for _, on := range p.On {
		level := rules.Risk
		if on.Host.Route == "image" {
			// The container's base runs it; what the manifest demands of
			// the runtime is refused where it is strict.
			if (a.Rank == survey.RankImage || b.Rank == survey.RankImage) && (strict[a.From] || strict[b.From]) {
				level = rules.Blocker
			} else if a.Rank != survey.RankImage && b.Rank != survey.RankImage {
				continue
			}
		} else if a.Rank < survey.RankImage && b.Rank < survey.RankImage && a.Lower != b.Lower && (strict[a.From] || strict[b.From]) {
			level = rules.Blocker // the version that the host takes refuses the source
		}
		p.Report(on, level, f)
	}
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
