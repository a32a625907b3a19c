package manifest

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

// without reports whether a dependency is declared without any version.
func without(d fact.Dependency) bool {
	return !d.Pinned && !d.Dev && !d.Optional && d.Group != "workspace root" && !strings.HasPrefix(d.Spec, ">") && !strings.HasPrefix(d.Spec, "!=")
}

var unpinned = &rules.Rule{
	ID: "manifest/unpinned", Level: rules.Risk, Title: "a dependency without a version, and no lock", Doc: doc("unpinned"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if c.HasLock {
			return
		}
		for _, d := range c.Dependencies {
			if !without(d) {
				continue
			}
			says := "without a version"
			if d.Spec != "" {
				says = "as " + d.Spec
			}
			remedy := d.Name + "==VERSION, as `pip freeze` prints it"
			switch {
			case strings.HasSuffix(d.File, ".toml") || strings.HasSuffix(d.File, "Pipfile"):
				remedy = fmt.Sprintf("a version for %s, and a lock file", d.Name)
			case c.Runtime == "node":
				remedy = fmt.Sprintf(`"%s": "^VERSION", and a lock file (npm install writes it)`, d.Name)
			}
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is declared %s and no lock file says which one is meant: each build may get another", d.Name, says), Remedy: remedy})
		}
	},
}
