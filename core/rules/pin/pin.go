package pin

import (
	"sort"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/version"
)

// read lists the pins of a tool that a host reads: a container's base on
// hosts that build the image, the others where the host brings the runtime.
// The order is that of the component.
func read(c *fact.Component, on *rules.On, what string) []fact.Pin {
	var list []fact.Pin
	for _, p := range c.Pins {
		if p.What == what && p.Rank != survey.RankCI && (p.Rank == survey.RankImage) == (on.Host.Route == "image") {
			list = append(list, p)
		}
	}
	return list
}

// whats lists the tools that the pins of a component are about, in order.
func whats(c *fact.Component) []string {
	seen := map[string]bool{}
	var list []string
	for _, p := range c.Pins {
		if !seen[p.What] {
			seen[p.What] = true
			list = append(list, p.What)
		}
	}
	sort.Strings(list)
	return list
}

// common is what all the pins leave that are understood.
func common(pins []fact.Pin) version.Set {
	all := version.All
	for _, p := range pins {
		if p.Known {
			all = all.Intersect(p.Set)
		}
	}
	return all
}

// advised is the line to take: a supported one that the other pins allow.
func advised(c *fact.Component, what, today string, but fact.Pin) string {
	left := version.All
	for _, p := range c.Pins {
		if p.What == what && p.Known && p.At != but.At && p.Rank != survey.RankCI {
			left = left.Intersect(p.Set)
		}
	}
	for _, s := range []version.Set{left, version.All} {
		if l, ok := version.Advised(what, s, today); ok {
			return l.Name
		}
	}
	return ""
}

// written puts a line into the form of the file that a pin stands in.
func written(p fact.Pin, line string) string {
	if line == "" {
		line = "VERSION"
	}
	if p.Form == "" {
		return line
	}
	if p.From == ".sdkmanrc" || p.From == "Gemfile" || p.From == "composer platform" || p.From == "go toolchain" || p.From == "elixir version" {
		line = strings.TrimSuffix(line, ".0")
	}
	return strings.Replace(p.Form, "V", line, 1)
}
