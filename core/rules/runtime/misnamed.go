package runtime

import (
	"fmt"
	"path"

	"ubique/core/place"
	"ubique/core/rules"
)

var misnamed = &rules.Rule{
	ID: "runtime/misnamed", Level: rules.Risk, Title: "a near miss of a name that must be exact", Doc: doc("misnamed"),
	Tree: func(p *rules.TreePass) {
		for _, m := range p.NearMisses {
			level := rules.Risk
			switch m.Exact {
			case "Procfile", "package.json", "requirements.txt", "Pipfile", "pyproject.toml", "Gemfile", "config.ru", "pom.xml", "build.gradle", "go.mod", "composer.json", "Cargo.toml", "mix.exs", "deno.json":
				level = rules.Blocker
			}
			p.Report(level, "", rules.Finding{
				Where:   place.Span{File: m.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1},
				Message: fmt.Sprintf("%s look for %s, exactly so; this file is named %s", m.Reader, m.Exact, path.Base(m.Path)),
				Remedy:  fmt.Sprintf("git mv %s %s", m.Path, path.Join(path.Dir(m.Path), m.Exact)),
			})
		}
	},
}
