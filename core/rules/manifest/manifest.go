package manifest

import (
	"ubique/core/fact"
	"ubique/core/survey/node"
	"ubique/core/survey/python"
)

var manifestName = map[string]string{"node": "package.json", "python": "requirements.txt", "ruby": "Gemfile", "php": "composer.json", "go": "go.mod", "rust": "Cargo.toml", "deno": "deno.json"}

// declared looks a package up as the runtime of the component does.
func declared(c *fact.Component, i fact.Import) (fact.Dependency, bool) {
	switch c.Runtime {
	case "python":
		return python.Declared(c, i.Package, i.Module)
	case "node":
		return node.Declared(c, i.Package)
	}
	return c.Dep(i.Package)
}

// needed lists the imports of packages that running the start needs, each
// package once, at its first place.
func needed(s *fact.Start) []fact.Import {
	var list []fact.Import
	seen := map[string]bool{}
	for _, i := range s.Imports {
		if i.Package == "" || i.TypeOnly || i.Optional || i.Standard || i.File != "" || seen[i.Package] {
			continue
		}
		seen[i.Package] = true
		list = append(list, i)
	}
	return list
}

func distribution(c *fact.Component, pkg string) string {
	if c.Runtime == "python" {
		return python.Distribution(pkg)
	}
	return pkg
}
