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

// instead is how a version is given in a manifest.
func instead(c *fact.Component, d fact.Dependency) string {
	switch c.Runtime {
	case "node", "deno":
		return fmt.Sprintf(`"%s": "^VERSION", and a lock file (npm install writes it)`, d.Name)
	case "ruby":
		return fmt.Sprintf(`gem "%s", "~> VERSION", and Gemfile.lock (bundle lock writes it)`, d.Name)
	case "php":
		return fmt.Sprintf(`"%s": "^VERSION", and composer.lock (composer update writes it)`, d.Name)
	case "rust":
		return fmt.Sprintf(`%s = "VERSION", and Cargo.lock (cargo generate-lockfile writes it)`, d.Name)
	case "elixir":
		return fmt.Sprintf(`{:%s, "~> VERSION"}, and mix.lock (mix deps.get writes it)`, d.Name)
	case "java":
		if strings.HasSuffix(d.File, ".xml") {
			return "a <version> for " + d.Name + ", or a parent or platform that manages it"
		}
		return d.Name + ":VERSION, a whole version"
	case "dotnet":
		return fmt.Sprintf(`Version="VERSION" for %s, a whole version`, d.Name)
	}
	if strings.HasSuffix(d.File, ".toml") || strings.HasSuffix(d.File, "Pipfile") {
		return fmt.Sprintf("a version for %s, and a lock file", d.Name)
	}
	return d.Name + "==VERSION, as `pip freeze` prints it"
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
			remedy := instead(c, d)
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is declared %s and no lock file says which one is meant: each build may get another", d.Name, says), Remedy: remedy})
		}
	},
}
