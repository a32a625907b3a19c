package start

import (
	"fmt"
	"slices"
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
			at := place.Whole(c.ID)
			if len(c.Manifests) > 0 {
				at = place.Span{File: c.Manifests[0].File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
			}
			for _, d := range c.Descriptors {
				if d.Image != nil && on.Host.Route == "image" {
					at = place.Span{File: d.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
				}
			}
			remedy := "a Procfile with the line: web: COMMAND"
			if c.Runtime == "node" {
				remedy = `in package.json: "scripts": { "start": "node FILE" }`
			}
			if slices.Contains(c.Frameworks, "Django") {
				remedy = "a Procfile with the line: web: gunicorn PROJECT.wsgi --bind 0.0.0.0:$PORT"
			}
			if on.Host.Route == "image" {
				remedy = `CMD ["PROGRAM", "ARGUMENT"]`
			}
			p.Report(on, 0, rules.Finding{Where: at, Message: "nothing says how to start this: no " + strings.Join(on.Host.Starts, ", no "), Remedy: remedy})
		}
	},
}

func hasProcessFile(c *fact.Component) bool {
	for _, d := range c.Descriptors {
		if d.Format == "process file" && d.Err == nil && len(d.Procs) > 0 {
			return true
		}
	}
	return false
}
