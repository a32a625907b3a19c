package manifest

import (
	"fmt"
	"path"
	"slices"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
)

// writes is the command that writes the lock of each package manager. Managers
// that are not here have none, or few who use it.
var writes = map[string]struct{ lock, command string }{
	"npm": {"package-lock.json", "npm install"}, "yarn": {"yarn.lock", "yarn install"}, "pnpm": {"pnpm-lock.yaml", "pnpm install"}, "bun": {"bun.lock", "bun install"},
	"pip": {"requirements.txt", "pip freeze > requirements.txt"}, "pyproject": {"uv.lock", "uv lock, or pip freeze > requirements.txt"}, "poetry": {"poetry.lock", "poetry lock"}, "uv": {"uv.lock", "uv lock"},
	"pdm": {"pdm.lock", "pdm lock"}, "pipenv": {"Pipfile.lock", "pipenv lock"}, "bundler": {"Gemfile.lock", "bundle lock"}, "composer": {"composer.lock", "composer update --lock"}, "cargo": {"Cargo.lock", "cargo generate-lockfile"},
	"go": {"go.sum", "go mod tidy"}, "mix": {"mix.lock", "mix deps.get"}, "setuptools": {"requirements.txt", "pip freeze > requirements.txt"},
}

var lockMissing = &rules.Rule{
	ID: "manifest/lock-missing", Level: rules.Risk, Title: "no lock file says which versions were meant", Doc: doc("lock-missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if c.HasLock || len(c.Manifests) == 0 || !c.Complete || len(loosest(c)) > 0 {
			return // manifest/unpinned says it where there is not even a range
		}
		ranges := 0
		for _, d := range c.Dependencies {
			if !d.Exact && !d.Optional && !d.Linked && d.Known && d.Group != "workspace root" && !(d.Dev && c.Runtime == "python") {
				ranges++
			}
		}
		m := c.Manifests[0]
		w, ok := writes[m.Manager]
		if m.Manager == "go" && !slices.ContainsFunc(c.Dependencies, func(d fact.Dependency) bool { return !d.Linked }) {
			return // folders of the tree stand in for all of them
		}
		if !ok || ranges == 0 && m.Manager != "go" || len(c.Dependencies) == 0 || m.Lock != "" {
			return
		}
		level := rules.Risk
		says := fmt.Sprintf("%s declares %s as ranges, and no %s says which versions were meant: each build may get others", m.File, count(ranges, "package"), w.lock)
		switch {
		case m.Manager == "go":
			level = rules.Blocker
			says = fmt.Sprintf("%s requires modules, and there is no go.sum beside it: the build stops at the first", m.File)
		case m.Manager == "pip":
			says = fmt.Sprintf("%s leaves the version of %s open: each build may get others", m.File, count(ranges, "package"))
		}
		remedy := fmt.Sprintf("%s, and commit %s", w.command, path.Join(path.Dir(m.File), w.lock))
		p.ReportAll(level, rules.Finding{Where: place.Span{File: m.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Message: says, Remedy: remedy})
	},
}

func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// loosest are the dependencies that manifest/unpinned is about.
func loosest(c *fact.Component) []fact.Dependency {
	var list []fact.Dependency
	for _, d := range c.Dependencies {
		if without(d) {
			list = append(list, d)
		}
	}
	return list
}
