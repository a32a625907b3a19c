// Package static surveys folders of files that are served as they are, and the
// generators that make such folders.
package static

import (
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
)

// Runtime is the survey of static sites.
type Runtime struct{}

// New makes the survey of static sites.
func New() *Runtime { return &Runtime{} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "static" }

// generators are programs that make a site, by their configuration, with the
// folder that they write and the command (their own documentation, 2026-11).
var generators = []struct{ file, name, out, build, sign string }{
	{"hugo.toml", "Hugo", "public", "hugo", ""}, {"hugo.yaml", "Hugo", "public", "hugo", ""}, {"config.toml", "Hugo", "public", "hugo", "baseURL"}, {"config.toml", "Zola", "public", "zola build", "base_url"},
	{"_config.yml", "Jekyll", "_site", "jekyll build", ""}, {"mkdocs.yml", "MkDocs", "site", "mkdocs build", ""}, {"book.toml", "mdBook", "book", "mdbook build", ""},
}

// Claims implements survey.Runtime. It stands behind every other runtime:
// survey.Find takes it only where no other claims the folder or one above.
func (*Runtime) Claims(t *source.Tree, f survey.Folder) int {
	for _, g := range generators {
		if f.Has(g.file) && (g.sign == "" || survey.Mentions(t, survey.Join(f.Dir, g.file), g.sign)) {
			return survey.Weak
		}
	}
	if f.Has("index.html") && !page(t, survey.Join(f.Dir, "index.html")) {
		return survey.Weak
	}
	return 0
}

// page tells templates that a bundler or a framework fills in.
func page(t *source.Tree, name string) bool {
	return survey.Mentions(t, name, `src="/src/main`, "{{", "{%", "<%")
}

// Gather implements survey.Runtime.
func (*Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	for _, g := range generators {
		if f.Has(g.file) && (g.sign == "" || survey.Mentions(t, c.Path(g.file), g.sign)) {
			c.Frameworks = append(c.Frameworks, g.name)
			c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "files", Path: c.Path(g.out), Build: g.build, At: place.Whole(c.Path(g.file))})
			return
		}
	}
	p := c.Dir
	if p == "" {
		p = "."
	}
	c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "files", Path: p, Detail: "as they are", At: place.Whole(c.Path("index.html"))})
}

// Modules implements survey.Runtime.
func (*Runtime) Modules(*source.Tree, *fact.Component, string) survey.Modules { return survey.Plain{} }

// Entry implements survey.Runtime.
func (*Runtime) Entry(*source.Tree, *fact.Component) (string, string, bool) { return "", "", false }

// Assumed implements survey.Runtime.
func (*Runtime) Assumed(*source.Tree, *fact.Component) (string, bool) { return "", false }

// Framework implements survey.Runtime.
func (*Runtime) Framework(string) string { return "" }
