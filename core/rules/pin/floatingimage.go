package pin

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/version"
)

// suggestion is a tag to take instead of none: of a release line that the
// other pins of the component allow.
func suggestion(c *fact.Component, base, today string) string {
	what := survey.Product(base)
	if what == "" {
		what = base // a distribution
	}
	l, ok := version.Advised(what, common(outside(c, what)), today)
	if !ok {
		if l, ok = version.Advised(what, version.All, today); !ok {
			return ""
		}
	}
	switch what {
	case "debian", "ubuntu", "alpine", "deno", "bun", "dotnet", "elixir", "erlang":
		return l.Name
	case "java":
		return l.Name + "-jre"
	}
	return l.Name + "-slim"
}

// outside are the pins of the source, apart from containers and CI.
func outside(c *fact.Component, what string) []fact.Pin {
	var list []fact.Pin
	for _, p := range c.Pins {
		if p.Rank < survey.RankImage && p.What == what {
			list = append(list, p)
		}
	}
	return list
}

var floatingImage = &rules.Rule{
	ID: "pin/floating-image", Level: rules.Risk, Title: "a container base without a version", Doc: doc("floating-image"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil {
				continue
			}
			for _, b := range on.Start.Descriptor.Image.Bases {
				if b.Unknown || b.Digest != "" || b.Name == "scratch" || b.Name == "" || fixed(b) {
					continue
				}
				base := path.Base(b.Name)
				if b.Tag == "" && hasDigit(base) {
					continue // a version in the name itself
				}
				says := "no tag, so the newest is taken"
				if b.Tag != "" {
					says = "the tag " + b.Tag + " names no version"
				}
				tag := suggestion(p.Component, base, p.Today)
				if tag == "" {
					tag = "VERSION"
				} else if b.Tag == "alpine" || b.Tag == "slim" {
					tag = strings.Replace(tag, "slim", b.Tag, 1)
				}
				p.Report(on, 0, rules.Finding{Where: b.At, Message: fmt.Sprintf("FROM %s: %s, and the next build may get another version", b.Text, says), Remedy: "FROM " + b.Name + ":" + tag})
			}
		}
	},
}

// fixed reports whether the tag holds a version of what the image brings: the
// number of the distribution under it is none.
func fixed(b fact.Base) bool {
	if im := survey.BaseTag(b); im.Known || survey.Product(b.Name) != "" && (im.Alias != "" || im.Distro != "") {
		return im.Known
	}
	return hasDigit(b.Tag)
}

func hasDigit(s string) bool { return strings.ContainsAny(s, "0123456789") }
