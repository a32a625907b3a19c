// Package pin holds the rules on which version of a runtime is asked for.
package pin

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
	"ubique/core/version"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{missing, disagree, floatingImage}

var label = map[string]string{"node": "Node.js", "python": "Python"}

// example is what to write where nothing is pinned.
var example = map[string]string{"node": `"engines": { "node": "24.x" }`, "python": "a file .python-version with the line 3.13"}

var missing = &rules.Rule{
	ID: "pin/missing", Level: rules.Risk, Title: "no version of the runtime is asked for", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Pins) > 0 || label[c.Runtime] == "" {
			return
		}
		at := place.Whole(p.Component.ID)
		if len(c.Manifests) > 0 {
			at = place.Span{File: c.Manifests[0].File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		} else if on := p.On; len(on) > 0 && on[0].Code != nil && on[0].Code.Target != nil && on[0].Code.Target.File != "" {
			at = place.Span{File: on[0].Code.Target.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		}
		for _, on := range p.On {
			if on.Host.Route == "image" {
				continue // the container's base is the pin there
			}
			p.Report(on, 0, rules.Finding{Where: at, Message: fmt.Sprintf("nothing says which version of %s this needs: the host takes its own, and another one next year", label[c.Runtime]), Remedy: example[c.Runtime]})
		}
	},
}

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
