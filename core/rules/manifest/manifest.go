// Package manifest holds the rules on dependency manifests.
package manifest

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey/node"
	"ubique/core/survey/python"
	"ubique/core/value"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{missing, undeclared, devOnly, unpinned}

var manifestName = map[string]string{"node": "package.json", "python": "requirements.txt"}

// declared looks a package up as the runtime of the component does.
func declared(c *fact.Component, i fact.Import) (fact.Dependency, bool) {
	if c.Runtime == "python" {
		return python.Declared(c, i.Package, i.Module)
	}
	return node.Declared(c, i.Package)
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

var missing = &rules.Rule{
	ID: "manifest/missing", Level: rules.Blocker, Title: "code needs packages and nothing declares any", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Manifests) > 0 || !c.Complete {
			return
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

func distribution(c *fact.Component, pkg string) string {
	if c.Runtime == "python" {
		return python.Distribution(pkg)
	}
	return pkg
}

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
				p.Report(on, 0, rules.Finding{Where: i.At, Likely: dist == i.Package && c.Runtime == "python", Message: fmt.Sprintf("imports %s, which %s does not declare: the host does not install it", i.Package, file), Remedy: fmt.Sprintf("declare %s in %s", dist, file)})
			}
		}
	},
}

// kept says whether development dependencies are there at run time.
func kept(on *rules.On, c *fact.Component) (there, known bool) {
	switch on.Host.RunDev {
	case "true":
		return true, true
	case "container":
		if !c.Install.Known {
			return false, false
		}
		return !c.Install.NoDev, true
	}
	return false, true
}

var devOnly = &rules.Rule{
	ID: "manifest/dev-only", Level: rules.Blocker, Title: "needed at run time, declared for development only", Doc: doc("dev-only"),
	Check: func(p *rules.Pass) {
		c := p.Component
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			if there, known := kept(on, c); there || !known {
				continue
			}
			why := "the host removes development dependencies before it runs"
			var gone []value.Step
			if on.Host.Route == "image" {
				why = "the container file installs without development dependencies"
				gone = []value.Step{{At: c.Install.At, Note: "installs without them"}}
			}
			report := func(d fact.Dependency, what string, trail ...value.Step) {
				p.Report(on, 0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is declared for development only, and %s: %s", d.Name, what, why), Trail: append(trail, gone...), Remedy: move(c, d)})
			}
			done := map[string]bool{}
			for _, use := range programs(on.Code) {
				for _, pkg := range use.packages {
					d, ok := c.Dep(pkg)
					if ok && d.Dev && !done[d.Name] && !anyRun(c, use.packages) {
						done[d.Name] = true
						report(d, "the start command runs "+use.name, value.Step{At: use.step.At, Note: use.step.Note})
					}
				}
			}
			if c.Bundled && on.Code.Target != nil && on.Code.Target.Built {
				continue
			}
			for _, i := range needed(on.Code) {
				if d, ok := declared(c, i); ok && d.Dev && !done[d.Name] && !installed(on, d.Name) {
					done[d.Name] = true
					report(d, "the code that runs imports it", rules.Step(i.At, "imports "+i.Package))
				}
			}
		}
	},
}

func anyRun(c *fact.Component, packages []string) bool {
	for _, pkg := range packages {
		if d, ok := c.Dep(pkg); ok && !d.Dev {
			return true
		}
	}
	return false
}

func move(c *fact.Component, d fact.Dependency) string {
	if c.Runtime == "node" {
		return fmt.Sprintf(`move "%s": "%s" from devDependencies to dependencies`, d.Name, d.Spec)
	}
	return fmt.Sprintf("declare %s among the dependencies that run, not in %s", d.Name, where(d))
}

func where(d fact.Dependency) string {
	if d.Group != "" {
		return "the group " + d.Group
	}
	return d.File
}

// use is a program on the way of a start, with the packages that give it.
type use struct {
	name     string
	packages []string
	step     value.Step
}

// programs lists the known programs that a start goes through.
func programs(s *fact.Start) []use {
	var list []use
	f := s.Final
	if f.Known != nil && len(f.Known.Packages) > 0 {
		list = append(list, use{f.Program, f.Known.Packages, value.Step{At: f.At, Note: "runs " + f.Program}})
	}
	for _, w := range f.Wrapped {
		if pkgs := node.ProgramPackages(w.Name); len(pkgs) > 0 {
			list = append(list, use{w.Name, pkgs, value.Step{At: w.At, Note: "runs " + w.Name}})
		}
	}
	return list
}

var unpinned = &rules.Rule{
	ID: "manifest/unpinned", Level: rules.Risk, Title: "a dependency without a version, and no lock", Doc: doc("unpinned"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if c.HasLock {
			return
		}
		for _, d := range c.Dependencies {
			if d.Pinned || d.Dev || d.Optional || d.Group == "workspace root" || strings.HasPrefix(d.Spec, ">") || strings.HasPrefix(d.Spec, "!=") {
				continue
			}
			says := "without a version"
			if d.Spec != "" {
				says = "as " + d.Spec
			}
			remedy := d.Name + "==VERSION, as `pip freeze` prints it"
			if c.Runtime == "node" {
				remedy = fmt.Sprintf(`"%s": "^VERSION", and a lock file (npm install writes it)`, d.Name)
			}
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is declared %s and no lock file says which one is meant: each build may get another", d.Name, says), Remedy: remedy})
		}
	},
}
