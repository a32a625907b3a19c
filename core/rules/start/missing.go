package start

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
)

var missing = &rules.Rule{
	ID: "start/missing", Level: rules.Blocker, Title: "nothing says how to start", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			c := p.Component
			if on.Start != nil {
				if m := on.Start.Final.Missing; m != nil && m.Kind == "script" {
					p.Report(on, 0, rules.Finding{Where: m.At, Message: fmt.Sprintf("runs the script %s, which package.json does not have", m.Name), Remedy: fmt.Sprintf(`"scripts": { "%s": "node FILE" }`, m.Name)})
				}
				continue
			}
			if on.Host.WebRequired && hasProcessFile(c) {
				continue // start/web-missing
			}
			if c.Broken || c.Misses("Procfile", "package.json") {
				continue // descriptor/unreadable, runtime/misnamed: the start may be in it
			}
			at := place.Whole(c.ID)
			if len(c.Manifests) > 0 {
				at = place.Span{File: c.Manifests[0].File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
			}
			broken := false
			for _, d := range c.Descriptors {
				broken = broken || d.Format == "container file" && (d.Err != nil || d.Image != nil && d.Image.Unknown) && on.Host.Route == "image"
				if d.Image != nil && on.Host.Route == "image" {
					at = place.Span{File: d.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
				}
			}
			if broken {
				continue // descriptor/unreadable: the command may be in it, or in the base image
			}
			p.Report(on, 0, rules.Finding{Where: at, Message: "nothing says how to start this: no " + strings.Join(on.Host.Starts, ", no "), Remedy: proposal(c, on)})
		}
	},
}

// proposal is the line that would start the component, with the names of this
// tree where there is something to go by.
func proposal(c *fact.Component, on *rules.On) string {
	command := "COMMAND"
	if on.Code != nil && on.Code.Target != nil && on.Code.Target.File != "" {
		if command = on.Code.Command; c.Runtime == "python" {
			command = production(c, on)
		}
	}
	switch {
	case on.Host.Route == "image":
		return "CMD " + command
	case c.Runtime == "node":
		return fmt.Sprintf(`in package.json: "scripts": { "start": %q }`, command)
	}
	return "a Procfile with the line: web: " + command
}

func hasProcessFile(c *fact.Component) bool {
	for _, d := range c.Descriptors {
		if d.Format == "process file" && d.Err == nil && len(d.Procs) > 0 {
			return true
		}
	}
	return false
}
