package manifest

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
	"ubique/core/version"
)

var lockStale = &rules.Rule{
	ID: "manifest/lock-stale", Level: rules.Blocker, Title: "the lock does not satisfy the manifest", Doc: doc("lock-stale"),
	Check: func(p *rules.Pass) {
		c := p.Component
		hashes(p)
		if len(c.Locks) == 0 {
			return
		}
		l := c.Locks[0]
		if l.Problem != "" || len(l.Packages) == 0 && l.Manager != "go" {
			return // could not be told
		}
		for _, s := range stale(c, l) {
			p.ReportAll(0, rules.Finding{Where: s.at, Message: s.says, Trail: []value.Step{{At: s.dep.At, Note: "declared as " + spec(s.dep)}}, Remedy: remedy(c, l)})
		}
		platforms(p, l)
	},
}

func spec(d fact.Dependency) string {
	if d.Spec == "" {
		return "any version"
	}
	return d.Spec
}

func remedy(c *fact.Component, l *lock.Lock) string {
	w := writes[l.Manager]
	return fmt.Sprintf("%s, and commit %s", w.command, l.File)
}

type staleness struct {
	dep  fact.Dependency
	at   place.Span
	says string
}

// stale compares what a manifest declares with what a lock holds, by the
// ranges and not by their texts.
func stale(c *fact.Component, l *lock.Lock) []staleness {
	var list []staleness
	dir := strings.TrimPrefix(strings.TrimPrefix(c.Dir, c.LockDir), "/")
	seen := map[string]bool{}
	for _, d := range c.Dependencies {
		if d.Optional || d.Group == "workspace root" || d.Group == "peerDependencies" || d.Marker != "" || c.LockDir != c.Dir && !workspaces(l.Manager) || seen[d.Name+"\x00"+d.Spec] || strings.Contains(d.Name, "[") {
			continue
		}
		if local(d.Spec) || d.Linked {
			continue
		}
		seen[d.Name+"\x00"+d.Spec] = true
		held := l.Of(dir, lockName(l, d))
		if len(held) == 0 {
			if l.Asked[dir] == nil && len(l.Asked) > 0 && l.Manager == "pnpm" || l.Manager == "gradle" || l.Manager == "nuget" && !d.Known {
				continue
			}
			if _, asked := l.Asked[dir][d.Name]; asked && l.Manager == "bundler" {
				continue // a gem of another platform
			}
			list = append(list, staleness{d, l.Top(), fmt.Sprintf("%s declares %s, and %s does not hold it: it was written before", d.File, d.Name, path.Base(l.File))})
			continue
		}
		if !d.Known {
			continue
		}
		fits, compared := false, false
		for _, h := range held {
			if h.Local {
				fits = true
				continue
			}
			v, ok := version.Parse(h.Version)
			if !ok {
				fits = true // a branch, an address: not compared
				continue
			}
			compared = true
			fits = fits || d.Set.Has(v)
		}
		if fits || !compared {
			continue
		}
		list = append(list, staleness{d, l.At(held[0].Off), fmt.Sprintf("%s declares %s %s, and %s holds %s", d.File, d.Name, spec(d), path.Base(l.File), held[0].Version)})
	}
	return list
}

// workspaces tells managers whose lock stands above the folders of members.
func workspaces(manager string) bool {
	switch manager {
	case "npm", "yarn", "pnpm", "bun", "cargo", "uv", "go":
		return true
	}
	return false
}

// lockName is the name under which a lock holds a dependency.
func lockName(l *lock.Lock, d fact.Dependency) string {
	if d.Real != "" && (l.Manager == "cargo" || l.Manager == "mix") {
		return d.Real
	}
	if l.Manager == "composer" || l.Manager == "nuget" {
		return strings.ToLower(d.Name)
	}
	return d.Name
}

// local tells specs that lead to a folder or an address and have no version.
func local(spec string) bool {
	for _, p := range []string{"file:", "link:", "portal:", "workspace:", "git", "http", "@", "catalog:", "patch:", "path"} {
		if strings.HasPrefix(strings.TrimSpace(spec), p) {
			return true
		}
	}
	return strings.Contains(spec, "://")
}

// platforms looks whether a lock that names its platforms is for Linux.
func platforms(p *rules.Pass, l *lock.Lock) {
	if len(l.Platforms) == 0 {
		return
	}
	for _, x := range l.Platforms {
		if x == "ruby" || strings.Contains(x, "linux") || x == "java" {
			return
		}
	}
	p.ReportAll(0, rules.Finding{Where: l.At(l.PlatformsOff), Message: fmt.Sprintf("%s is made for %s only: on Linux, where hosts run, the install stops", path.Base(l.File), strings.Join(l.Platforms, ", ")), Remedy: "bundle lock --add-platform x86_64-linux, and commit " + l.File})
}

// hashes looks whether all lines of a requirements file have hashes, where
// some have: pip then refuses the others (pip documentation, "Secure
// installs").
func hashes(p *rules.Pass) {
	c := p.Component
	with := map[string]fact.Dependency{}
	for _, d := range c.Dependencies {
		if d.Hashed && with[d.File].Name == "" {
			with[d.File] = d
		}
	}
	for _, d := range c.Dependencies {
		if w := with[d.File]; w.Name != "" && !d.Hashed && !d.Optional && !local(d.Spec) {
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s has no hash and %s has: where one line has a hash, pip refuses those without", d.Name, w.Name), Trail: []value.Step{{At: w.At, Note: "has a hash"}}, Remedy: "pip-compile --generate-hashes, or hashes for none"})
			return
		}
	}
}
