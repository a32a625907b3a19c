package runtime

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

var misplaced = &rules.Rule{
	ID: "runtime/misplaced", Level: rules.Blocker, Title: "the manifest is in a subfolder, where a host does not look", Doc: doc("misplaced"),
	Tree: func(p *rules.TreePass) {
		if len(p.Components) != 1 || p.Rooted {
			return
		}
		c := p.Components[0]
		if c.Dir == "" {
			strayed(p, c)
			return
		}
		if len(c.Manifests) == 0 || c.Runtime == "container" || c.Runtime == "static" || monorepo(p, c) {
			return
		}
		m := c.Manifests[0]
		if !strings.HasPrefix(m.File, c.Dir+"/") {
			return
		}
		p.Report(0, "git", rules.Finding{
			Where:   top(c),
			Message: fmt.Sprintf("the only manifest is %s, in a subfolder: a host that looks at the root finds no application", m.File),
			Remedy:  fmt.Sprintf("git mv %s/* . so that %s stands at the root, or tell the host that %s is the root", c.Dir, path.Base(m.File), c.Dir),
		})
	},
}

// monorepo reports whether something at the root says that components lie in
// folders: a descriptor, a workspace, a build that enters the folder.
func monorepo(p *rules.TreePass, c *fact.Component) bool {
	for _, d := range c.Descriptors {
		if d.Image != nil || strings.HasPrefix(d.File, c.Dir+"/") {
			return true
		}
		for _, pr := range d.Procs {
			if strings.Contains(pr.Command, path.Base(c.Dir)) {
				return true
			}
		}
	}
	for _, n := range []string{"package.json", "pnpm-workspace.yaml", "lerna.json", "turbo.json", "nx.json", "go.work", "Cargo.toml", "pom.xml", "settings.gradle", "settings.gradle.kts", "compose.yaml", "compose.yml", "docker-compose.yml", "docker-compose.yaml", "Makefile", "ubique.yaml", "global.json"} {
		if p.Tree.Has(n) {
			return true
		}
	}
	switch top, _, _ := strings.Cut(c.Dir, "/"); top {
	case "apps", "services", "packages", "projects", "components", "modules", "crates", "libs":
		return true
	}
	for _, e := range p.Tree.In("") {
		switch path.Ext(e.Path) {
		case ".sln", ".slnx":
			return true
		}
	}
	return false
}

// strayed looks for the one requirements file of a component whose folder has
// none: the start file is here and the manifest is not.
func strayed(p *rules.TreePass, c *fact.Component) {
	if len(c.Manifests) > 0 || c.Broken {
		return
	}
	names := map[string]bool{"node": true, "python": true, "ruby": true, "php": true}
	if !names[c.Runtime] {
		return
	}
	want := map[string]map[string]bool{
		"node": {"package.json": true}, "python": {"requirements.txt": true, "pyproject.toml": true, "Pipfile": true}, "ruby": {"Gemfile": true}, "php": {"composer.json": true},
	}[c.Runtime]
	found := ""
	for _, e := range p.Tree.Entries {
		if !e.OnDisk || e.Ignored || !want[path.Base(e.Path)] || strings.Count(e.Path, "/") != 1 {
			continue
		}
		if found != "" {
			return
		}
		found = e.Path
	}
	if found == "" {
		return
	}
	at := top(c)
	at.File = found
	p.Report(0, "git", rules.Finding{
		Where:   at,
		Message: fmt.Sprintf("%s is in a subfolder, and what starts is at the root: a host looks for it there and installs nothing", found),
		Remedy:  fmt.Sprintf("git mv %s %s", found, path.Base(found)),
	})
}
