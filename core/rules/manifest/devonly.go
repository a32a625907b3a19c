package manifest

import (
	"fmt"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/survey/node"
	"ubique/core/value"
)

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
			atBuild(p, on)
			if there, known := kept(on, c); there || !known {
				continue
			}
			var gone []value.Step
			if on.Host.Route == "image" {
				gone = []value.Step{{At: c.Install.At, Note: "installs without them"}}
			}
			report := func(d fact.Dependency, remedy, what string, trail ...value.Step) {
				p.Report(on, 0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is declared for development only, and %s: development dependencies are gone by then", d.Name, what), Trail: append(trail, gone...), Remedy: remedy})
			}
			done := map[string]bool{}
			for _, use := range programs(on.Code) {
				for _, pkg := range use.packages {
					d, ok := c.Dep(pkg)
					if ok && d.Dev && !done[d.Name] && !anyRun(c, use.packages) {
						done[d.Name] = true
						remedy := move(c, d)
						if k := command.Lookup(use.name); k != nil && k.Watch != "" { // start/reload says the same
							remedy = "node " + on.Code.Named()
						}
						report(d, remedy, "the start command runs "+use.name, use.step)
					}
				}
			}
			if c.Bundled && on.Code.Target != nil && on.Code.Target.Built {
				continue
			}
			for _, i := range needed(on.Code) {
				if d, ok := declared(c, i); ok && d.Dev && !done[d.Name] && !installed(on, d.Name) {
					done[d.Name] = true
					report(d, move(c, d), "the code that runs imports it", rules.Step(i.At, "imports "+i.Package))
				}
			}
		}
	},
}

// atBuild reports what a build step needs where the container installs without
// development dependencies before it.
func atBuild(p *rules.Pass, on *rules.On) {
	c := p.Component
	if on.Host.Route != "image" || !c.Install.BuildNoDev {
		return
	}
	for _, program := range survey.ScriptPrograms(c, c.Install.Build) {
		for _, pkg := range append(node.ProgramPackages(program), program) {
			d, ok := c.Dep(pkg)
			if !ok || !d.Dev || installed(on, d.Name) {
				continue
			}
			p.Report(on, 0, rules.Finding{
				Where:   d.At,
				Message: fmt.Sprintf("%s is declared for development only, and the container builds with %s after installing without such packages", d.Name, program),
				Trail:   []value.Step{{At: c.Scripts[c.Install.Build].At, Note: "the build runs " + program}, {At: c.Install.BuildAt, Note: "builds here"}, {At: c.Install.At, Note: "installs without them"}},
				Remedy:  "install all packages before the build, and leave these out of the last stage; or " + move(c, d),
			})
			break
		}
	}
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
	switch c.Runtime {
	case "ruby":
		return fmt.Sprintf("move gem %q out of the group %s", d.Name, d.Group)
	case "php":
		return fmt.Sprintf(`move "%s" from require-dev to require`, d.Name)
	case "rust":
		return fmt.Sprintf("move %s from [dev-dependencies] to [dependencies]", d.Name)
	case "elixir":
		return fmt.Sprintf("{:%s, %q} without only:", d.Name, d.Spec)
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
	for _, b := range f.Before { // steps that the start runs first
		if b.Known != nil && len(b.Known.Packages) > 0 {
			list = append(list, use{b.Program, b.Known.Packages, value.Step{At: b.At, Note: "runs " + b.Program + " first"}})
		}
	}
	for _, w := range f.Wrapped {
		if pkgs := node.ProgramPackages(w.Name); len(pkgs) > 0 {
			list = append(list, use{w.Name, pkgs, value.Step{At: w.At, Note: "runs " + w.Name}})
		}
	}
	return list
}
