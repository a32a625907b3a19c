package fact

// labels are the names of runtimes and package managers as people write them.
var labels = map[string]string{
	"node": "Node.js", "python": "Python", "ruby": "Ruby", "java": "Java", "go": "Go", "php": "PHP", "dotnet": ".NET", "rust": "Rust", "elixir": "Elixir", "erlang": "Erlang",
	"deno": "Deno", "bun": "Bun", "browser": "browser application", "static": "static files", "container": "container file only", "npm": "npm", "yarn": "Yarn", "pnpm": "pnpm",
}

// Label gives the name of a runtime or package manager as people write it.
func Label(runtime string) string {
	if l := labels[runtime]; l != "" {
		return l
	}
	return runtime
}

// Pinned reports whether something asks for a version of the runtime itself,
// apart from CI.
func (c *Component) Pinned() bool {
	for _, p := range c.Pins {
		if p.What == c.Engine() && p.Rank < 4 {
			return true
		}
	}
	return false
}

// Engine is the program that runs the code: the runtime, or what takes its
// place.
func (c *Component) Engine() string {
	if c.Variant != "" {
		return c.Variant
	}
	return c.Runtime
}
