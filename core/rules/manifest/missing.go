package manifest

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/source"
)

var missing = &rules.Rule{
	ID: "manifest/missing", Level: rules.Blocker, Title: "code needs packages and nothing declares any", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Manifests) > 0 || !c.Complete {
			return
		}
		if c.Misses("package.json", "requirements.txt", "pyproject.toml", "Pipfile", "Gemfile", "composer.json", "go.mod", "Cargo.toml", "deno.json") {
			return // runtime/misnamed: what is declared stands there
		}
		if strayed(p.Tree, c) {
			return // runtime/misplaced: it stands in a subfolder
		}
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			if on.Host.Route == "image" && installsByHand(on.Code) {
				continue
			}
			for _, i := range needed(on.Code) {
				p.Report(on, 0, rules.Finding{Where: i.At, Message: fmt.Sprintf("imports %s, and no manifest declares any package: the host installs none", i.Package), Remedy: fmt.Sprintf("a %s that declares %s", manifestName[c.Runtime], distribution(c, i.Package))})
				break
			}
		}
	},
}

// strayed reports whether the only manifest of the tree stands in a folder
// below the component's.
func strayed(t *source.Tree, c *fact.Component) bool {
	n := 0
	for _, e := range t.Below(c.Dir) {
		rel := strings.TrimPrefix(strings.TrimPrefix(e.Path, c.Dir), "/")
		if e.OnDisk && !e.Ignored && strings.Count(rel, "/") == 1 && path.Base(rel) == manifestName[c.Runtime] {
			n++
		}
	}
	return n == 1 && c.Dir == ""
}

// installsByHand tells container files that install packages by name.
func installsByHand(s *fact.Start) bool {
	if s.Descriptor == nil || s.Descriptor.Image == nil {
		return false
	}
	for _, r := range s.Descriptor.Image.Runs {
		if strings.Contains(r.Text, "install") || strings.Contains(r.Text, " add ") {
			return true
		}
	}
	return false
}
