package runtime

import (
	"ubique/core/place"
	"ubique/core/rules"
)

// starters are the names by which a component is found.
var starters = map[string]bool{"Procfile": true, "Dockerfile": true, "Containerfile": true, "package.json": true, "requirements.txt": true, "pyproject.toml": true, "Pipfile": true, "Gemfile": true, "config.ru": true, "pom.xml": true, "build.gradle": true, "go.mod": true, "composer.json": true, "Cargo.toml": true, "mix.exs": true, "deno.json": true}

var undetected = &rules.Rule{
	ID: "runtime/undetected", Level: rules.Blocker, Title: "nothing here can be started", Doc: doc("undetected"),
	Tree: func(p *rules.TreePass) {
		if len(p.Components) > 0 {
			return
		}
		for _, m := range p.NearMisses {
			if starters[m.Exact] {
				return // runtime/misnamed: what it is stands there
			}
		}
		p.Report(0, "", rules.Finding{
			Where:   place.Whole("."),
			Message: "no component was found: no manifest, start file or server code of a runtime that Ubique reads (Node.js, Deno, Bun, Python, Ruby, Java, Kotlin, Go, PHP, .NET, Rust, Elixir), no page and no container file",
			Remedy:  "name the folder that holds the application: ubique check FOLDER",
		})
	},
}
