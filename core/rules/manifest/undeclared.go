package manifest

import (
	"fmt"
	"strings"

	"ubique/core/rules"
)

// installed reports whether a container file installs a package by its name.
func installed(on *rules.On, pkg string) bool {
	if on.Host.Route != "image" || on.Code.Descriptor == nil || on.Code.Descriptor.Image == nil {
		return false
	}
	for _, r := range on.Code.Descriptor.Image.Runs {
		for _, w := range strings.FieldsFunc(r.Text, func(r rune) bool { return strings.ContainsRune(" \t\n\"';&[]=<>~", r) }) {
			if strings.EqualFold(w, pkg) {
				return true
			}
		}
	}
	return false
}

var undeclared = &rules.Rule{
	ID: "manifest/undeclared", Level: rules.Blocker, Title: "code imports a package that is not declared", Doc: doc("undeclared"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Manifests) == 0 || !c.Complete || len(c.Frameworks) > 0 && c.Frameworks[0] == "browser application" {
			return
		}
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			for _, i := range needed(on.Code) {
				dist := distribution(c, i.Package)
				if _, ok := declared(c, i); ok || installed(on, dist) {
					continue
				}
				file := c.Manifests[0].File
				p.Report(on, 0, rules.Finding{Where: i.At, Likely: dist == i.Package && c.Runtime == "python" || c.Runtime == "java" || c.Runtime == "dotnet", Message: fmt.Sprintf("imports %s, which %s does not declare: the host does not install it", i.Package, file), Remedy: fmt.Sprintf("declare %s in %s", dist, file)})
			}
		}
	},
}
