package pin

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/version"
)

// holder says how a version of a runtime is asked for, with V for the version.
var holder = map[string]string{
	"node": `"engines": { "node": "V.x" }`, "python": "a file .python-version with the line V", "ruby": "a file .ruby-version with the line V.0, and ruby file: \".ruby-version\" in the Gemfile",
	"java": "a file .java-version with the line V, or <java.version>V</java.version>", "go": "the line go V.0 in go.mod", "php": `"php": "~V.0" under require in composer.json`,
	"dotnet": "<TargetFramework>netV</TargetFramework>", "rust": `a file rust-toolchain.toml with channel = "V.0" under [toolchain]`, "elixir": "a line elixir V.0 in .tool-versions",
	"deno": "a line deno V in .tool-versions", "bun": `"packageManager": "bun@V.0.0"`,
}

// pinned are the files that may hold the pin of a runtime, beside its version
// files.
var pinned = map[string][]string{
	"node": {"package.json"}, "python": {"pyproject.toml", "Pipfile"}, "ruby": {"Gemfile"}, "java": {"pom.xml", "build.gradle"}, "go": {"go.mod"}, "php": {"composer.json"},
	"rust": {"Cargo.toml", "rust-toolchain.toml", "rust-toolchain"}, "elixir": {"mix.exs"}, "dotnet": {"global.json"}, "deno": {"deno.json"}, "bun": {"package.json"},
}

var missing = &rules.Rule{
	ID: "pin/missing", Level: rules.Risk, Title: "no version of the runtime is asked for", Doc: doc("missing"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if c.Pinned() || c.Broken || holder[c.Engine()] == "" {
			return
		}
		if c.Misses(append(survey.PinFiles(c.Engine()), pinned[c.Engine()]...)...) {
			return // runtime/misnamed: the pin may be in it
		}
		at := place.Whole(p.Component.ID)
		if len(c.Manifests) > 0 {
			at = place.Span{File: c.Manifests[0].File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		} else if on := p.On; len(on) > 0 && on[0].Code != nil && on[0].Code.Target != nil && on[0].Code.Target.File != "" {
			at = place.Span{File: on[0].Code.Target.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		}
		line := "VERSION"
		if l, ok := version.Advised(c.Engine(), version.All, p.Today); ok {
			line = strings.TrimSuffix(l.Name, ".0")
		}
		for _, on := range p.On {
			if on.Host.Route == "image" {
				continue // the container's base is the pin there
			}
			p.Report(on, 0, rules.Finding{Where: at, Message: fmt.Sprintf("nothing says which version of %s this needs: the host takes its own, and another one next year", fact.Label(c.Engine())), Remedy: strings.ReplaceAll(holder[c.Engine()], "V", line)})
		}
	},
}
