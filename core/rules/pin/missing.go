package pin

import (
	"fmt"

	"ubique/core/place"
	"ubique/core/rules"
)

// example is what to write where nothing is pinned.
var example = map[string]string{"node": `"engines": { "node": "24.x" }`, "python": "a file .python-version with the line 3.13"}

// pinned are the files that may hold the pin of a runtime.
var pinned = map[string][]string{
	"node":   {"package.json", ".nvmrc", ".node-version", ".tool-versions"},
	"python": {"runtime.txt", ".python-version", ".tool-versions", "pyproject.toml", "Pipfile"},
}

var missing = &rules.Rule{
	ID: "pin/missing", Level: rules.Risk, Title: "no version of the runtime is asked for", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Pins) > 0 || c.Broken || label[c.Runtime] == "" {
			return
		}
		if c.Misses(pinned[c.Runtime]...) {
			return // runtime/misnamed: the pin may be in it
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
