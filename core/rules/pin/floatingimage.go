package pin

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/version"
)

// lines are release lines to take, the one to prefer first (release schedules
// of Node.js and Python, read 2026-11).
var lines = map[string][]string{"node": {"24", "22", "20", "18"}, "python": {"3.13", "3.14", "3.12", "3.11", "3.10", "3.9"}}

// suggestion is a tag to take instead of none: of a release line that the
// other pins of the component allow.
func suggestion(c *fact.Component, base string) string {
	left := version.All
	for _, p := range c.Pins {
		if p.Known && p.Rank < 3 && p.What == base {
			left = left.Intersect(p.Set)
		}
	}
	for _, l := range lines[base] {
		if s, ok := version.Prefix(l); ok && !s.Intersect(left).Empty() {
			return l + "-slim"
		}
	}
	return ""
}

var floatingImage = &rules.Rule{
	ID: "pin/floating-image", Level: rules.Risk, Title: "a container base without a version", Doc: doc("floating-image"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil {
				continue
			}
			for _, b := range on.Start.Descriptor.Image.Bases {
				if b.Unknown || b.Digest != "" || b.Name == "scratch" || b.Name == "" || hasDigit(b.Tag) {
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
				tag := suggestion(p.Component, base)
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

func hasDigit(s string) bool { return strings.ContainsAny(s, "0123456789") }
