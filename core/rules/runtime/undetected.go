package runtime

import (
	"ubique/core/place"
	"ubique/core/rules"
)

var undetected = &rules.Rule{
	ID: "runtime/undetected", Level: rules.Blocker, Title: "nothing here can be started", Doc: doc("undetected"),
	Tree: func(p *rules.TreePass) {
		if len(p.Components) > 0 {
			return
		}
		p.Report(0, "", rules.Finding{
			Where:   place.Whole("."),
			Message: "no component was found: no manifest, start file or server code of a runtime that Ubique reads (Node.js, Deno, Bun, Python, Ruby, Java, Kotlin, Go, PHP, .NET, Rust, Elixir), no page and no container file",
			Remedy:  "name the folder that holds the application: ubique check FOLDER",
		})
	},
}
