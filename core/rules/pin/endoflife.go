package pin

import (
	"fmt"
	"path"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/value"
	"ubique/core/version"
)

var endOfLife = &rules.Rule{
	ID: "pin/end-of-life", Level: rules.Risk, Title: "support of the version has ended, or ends within 90 days", Doc: doc("end-of-life"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			for _, what := range whats(p.Component) {
				ended(p, on, what, read(p.Component, on, what))
			}
			if on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil || on.Host.Route != "image" {
				continue
			}
			for _, b := range on.Start.Descriptor.Image.Bases {
				if b.Final && !b.Unknown && b.Tag != "" {
					distro(p, on, b)
				}
			}
		}
	},
}

// ended judges the version that a host would take: the newest that all pins
// allow. Only lower bounds leave the choice to the host.
func ended(p *rules.Pass, on *rules.On, what string, pins []fact.Pin) {
	all := common(pins)
	if all.Empty() { // they disagree: each is judged alone
		all = version.All
		for _, x := range pins {
			if x.Known && !x.Lower {
				all = x.Set
			}
		}
	}
	l, ok := version.NewestLine(what, all, p.Today)
	if !ok {
		return
	}
	stands := l.Stands(p.Today)
	if stands != version.Ended && stands != version.Ending {
		return
	}
	// The pin that holds it back: the one whose upper end is the lowest.
	var by *fact.Pin
	for i, x := range pins {
		if !x.Known || !x.Set.Bounded() {
			continue
		}
		if by == nil {
			by = &pins[i]
			continue
		}
		a, _ := x.Set.End()
		b, _ := by.Set.End()
		if a.Compare(b) < 0 {
			by = &pins[i]
		}
	}
	if by == nil {
		return
	}
	f := rules.Finding{Where: by.At, Message: says(fact.Label(what)+" "+l.Name, l, stands), Remedy: written(*by, advised(p.Component, what, p.Today, *by))}
	if by.Rank == survey.RankImage {
		f.Remedy = "a base of " + fact.Label(what) + " " + advised(p.Component, what, p.Today, *by)
	}
	for _, x := range pins {
		if x.At != by.At && x.Known {
			f.Trail = append(f.Trail, value.Step{At: x.At, Note: x.From + ": " + x.Text})
		}
	}
	p.Report(on, level(stands), f)
}

func says(what string, l version.Line, stands version.Standing) string {
	if stands == version.Ending {
		return fmt.Sprintf("support of %s ends on %s, within 90 days", what, l.Ends)
	}
	return fmt.Sprintf("support of %s ended on %s: no fix comes any more, and hosts take it off their list", what, l.Ends)
}

func level(s version.Standing) rules.Level {
	if s == version.Ending {
		return rules.Advice
	}
	return rules.Risk
}

// distro judges the distribution under a base image.
func distro(p *rules.Pass, on *rules.On, b fact.Base) {
	im := version.Tag(path.Base(b.Name), b.Tag)
	if im.Release == "" {
		return
	}
	set, ok := version.Prefix(im.Release)
	if !ok {
		return
	}
	l, ok := version.NewestLine(im.Distro, set, p.Today)
	if !ok || l.Stands(p.Today) != version.Ended && l.Stands(p.Today) != version.Ending {
		return
	}
	take := ""
	if n, ok := version.Advised(im.Distro, version.All, p.Today); ok {
		take = n.Name
	}
	label := map[string]string{"debian": "Debian", "ubuntu": "Ubuntu", "alpine": "Alpine"}[im.Distro]
	p.Report(on, level(l.Stands(p.Today)), rules.Finding{Where: b.At, Message: "FROM " + b.Text + ": " + says(label+" "+l.Name, l, l.Stands(p.Today)), Remedy: "a base on " + label + " " + take})
}
