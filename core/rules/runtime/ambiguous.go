package runtime

import (
	"fmt"
	"path"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

var ambiguous = &rules.Rule{
	ID: "runtime/ambiguous", Level: rules.Risk, Title: "two runtimes compete for one folder", Doc: doc("ambiguous"),
	Tree: func(p *rules.TreePass) {
		first := map[string]*fact.Component{}
		for _, c := range p.Components {
			o := first[c.Dir]
			if o == nil {
				first[c.Dir] = c
				continue
			}
			if decided(o) || decided(c) || onlyFiles(o) || onlyFiles(c) || frontOf(o, c) || frontOf(c, o) {
				continue
			}
			folder := c.Dir
			if folder == "" {
				folder = "the root of the tree"
			}
			f := rules.Finding{
				Where:   top(c),
				Message: fmt.Sprintf("%s holds a %s application and a %s application, and nothing says which one to run", folder, fact.Label(o.Runtime), fact.Label(c.Runtime)),
				Trail:   []value.Step{{At: top(o), Note: "the other one"}},
				Remedy:  "a Procfile with the web process, or a folder for each",
			}
			p.Report(0, "git", f)
		}
	},
}

// decided reports whether something in the folder says what to run.
func decided(c *fact.Component) bool {
	for _, d := range c.Descriptors {
		if len(d.Procs) > 0 || d.Image != nil {
			return true
		}
	}
	return false
}

// onlyFiles tells applications of the browser: they are built and not started.
func onlyFiles(c *fact.Component) bool {
	for _, fw := range c.Frameworks {
		if fw == "browser application" {
			return true
		}
	}
	return false
}

// frontOf tells a manifest of Node.js that only builds the front end of the
// other application: nothing in it starts a server.
func frontOf(c, other *fact.Component) bool {
	if c.Runtime != "node" || other.Runtime == "node" {
		return false
	}
	_, start := c.Scripts["start"]
	return !start && len(c.Frameworks) == 0
}

// top is where a component is declared: its manifest, else what it starts.
func top(c *fact.Component) place.Span {
	at := place.Span{Line: 1, Col: 1, EndLine: 1, EndCol: 1}
	for _, m := range c.Manifests {
		if path.Dir(m.File) == c.Dir || path.Dir(m.File) == "." && c.Dir == "" {
			at.File = m.File
			return at
		}
	}
	for _, s := range c.Starts {
		if s.Target != nil && s.Target.File != "" {
			at.File = s.Target.File
			return at
		}
	}
	return place.Whole(c.ID)
}
