package start

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/survey/node"
	"ubique/core/version"
)

var programUndeclared = &rules.Rule{
	ID: "start/program-undeclared", Level: rules.Blocker, Title: "the program comes from a package that is not declared", Doc: doc("program-undeclared"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if !c.Complete || len(c.Manifests) == 0 {
			return
		}
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			f := on.Start.Final
			type via struct {
				name string
				at   place.Span
				pkgs []string
			}
			var list []via
			if f.Known != nil {
				list = append(list, via{f.Program, f.At, f.Known.Packages})
			}
			for _, w := range f.Wrapped {
				if w.Name != f.Program {
					list = append(list, via{w.Name, w.At, node.ProgramPackages(w.Name)})
				}
			}
			for _, v := range list {
				if len(v.pkgs) == 0 || throughNpx(f, v.name) {
					continue
				}
				if declares(c, v.pkgs) || containerInstalls(on, v.pkgs) {
					continue
				}
				p.Report(on, 0, rules.Finding{Where: v.at, Trail: f.Steps, Message: fmt.Sprintf("runs %s, which comes from the package %s; %s does not declare it, so the host does not have it", v.name, v.pkgs[0], c.Manifests[0].File), Remedy: fmt.Sprintf("declare %s in %s", v.pkgs[0], c.Manifests[0].File)})
			}
		}
	},
}

// throughNpx tells programs that npx fetches when they are not there.
func throughNpx(f command.Final, _ string) bool {
	for _, w := range f.Wrapped {
		if w.Name == "npx" || w.Name == "bunx" {
			return true
		}
	}
	return f.Fetched
}

// brought are packages that have the program and come with others below a version: rack
// has rackup up to its version 2, which Sinatra 3 and Rails 7.0 ask for (their
// specifications at rubygems.org, 2026-11).
var brought = map[string][]struct {
	by    string
	below version.Version
}{
	"rackup": {{"sinatra", version.Version{N: [4]int{4}}}, {"rails", version.Version{N: [4]int{7, 1}}}},
}

func declares(c *fact.Component, pkgs []string) bool {
	for _, pkg := range pkgs {
		if _, ok := c.Dep(pkg); ok || c.Locked[pkg] {
			return true
		}
		for _, b := range brought[pkg] {
			if d, ok := c.Dep(b.by); ok && d.Known && !d.Set.Empty() && d.Set.Within(version.Below(b.below)) {
				return true
			}
		}
		for _, d := range c.Dependencies { // uvicorn comes with fastapi[standard]
			if pkg == "uvicorn" && (d.Name == "fastapi[standard]" || d.Name == "fastapi[all]" || d.Name == "fastapi-cli") || pkg == "fastapi-cli" && d.Name == "fastapi[standard]" {
				return true
			}
		}
	}
	return false
}

func containerInstalls(on *rules.On, pkgs []string) bool {
	if on.Host.Route != "image" || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil {
		return false
	}
	for _, r := range on.Start.Descriptor.Image.Runs {
		for _, w := range strings.FieldsFunc(r.Text, func(r rune) bool { return strings.ContainsRune(" \t\n\"';&[]=<>~@", r) }) {
			if slices.Contains(pkgs, strings.ToLower(w)) {
				return true
			}
		}
	}
	return false
}
