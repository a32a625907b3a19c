package pin

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/rules"
)

// suggestion is a tag to take instead of none.
var suggestion = map[string]string{"node": "24-slim", "python": "3.13-slim"}

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
				tag := suggestion[base]
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
