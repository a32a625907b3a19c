// Package elixir surveys Elixir components: mix.exs, mix.lock, releases,
// Phoenix and Plug applications, umbrella projects (documentation of Mix, read
// 2026-11).
package elixir

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Elixir.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Elixir for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "elixir" }

var frameworks = [][2]string{{"phoenix", "Phoenix"}, {"plug_cowboy", "Plug"}, {"bandit", "Bandit"}, {"ash_phoenix", "Ash"}, {"absinthe", "Absinthe"}, {"raxx", "Raxx"}}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	if !f.Has("mix.exs") {
		return 0
	}
	if inUmbrella(t, f.Dir) {
		return 1 // the root of the umbrella is deployed
	}
	if survey.Mentions(t, survey.Join(f.Dir, "mix.exs"), ":phoenix", ":plug_cowboy", ":bandit", ":cowboy", "mod:", "apps_path", "releases:") || f.Has("Procfile") || f.Has("Dockerfile") {
		return 2
	}
	return 1
}

func inUmbrella(t *source.Tree, dir string) bool {
	up := source.Dir(source.Dir(dir))
	return dir != "" && path.Base(source.Dir(dir)) == "apps" && survey.Mentions(t, survey.Join(up, "mix.exs"), "apps_path")
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, _ survey.Folder) {
	c.Complete = true
	r.mix(t, c, c.Path("mix.exs"), true)
	for _, e := range t.Below(c.Path("apps")) {
		if path.Base(e.Path) == "mix.exs" && inUmbrella(t, source.Dir(e.Path)) {
			r.mix(t, c, e.Path, false)
		}
	}
	survey.TakeLocks(t, c, r.locks, false, "mix")
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "elixir")...)
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "erlang")...)
	survey.FrameworksOf(c, frameworks)
}

// mix reads a mix.exs as code: the lists that project and deps give.
func (r *Runtime) mix(t *source.Tree, c *fact.Component, name string, root bool) {
	f := survey.Code(t, name, code.Elixir)
	if f == nil {
		c.Complete = false
		return
	}
	c.Manifests = append(c.Manifests, &fact.Manifest{File: name, Manager: "mix"})
	app := ""
	f.Body.Walk(func(n *code.Node) bool {
		switch {
		case n.Is(code.Pair) && n.Name == "elixir" && root:
			if s, ok := survey.Literal(n.Kid(0)); ok {
				c.Pins = append(c.Pins, survey.ReadPin("elixir", "mix.exs", s, survey.RankManifest, survey.Quoted(f, n.Kid(0))))
			}
		case n.Is(code.Pair) && root && (n.Kid(0).Is(code.String) || n.Kid(0).Is(code.Array)) && n.Name == "run":
			c.Tasks = map[string]bool{n.Name: true} // an alias (Mix documentation, "Aliases")
		case n.Is(code.Pair) && n.Name == "app" && root:
			app = text(n.Kid(0))
		case n.Is(code.Array) && len(n.Kids) >= 2 && n.Kids[0].Is(code.String) && f.Src[n.Off] == '{' && f.Src[n.Kids[0].Off] == ':', n.Is(code.Object) && len(n.Kids) >= 2 && n.Kids[0].Is(code.String) && f.Src[n.Off] == '{' && f.Src[n.Kids[0].Off] == ':':
			dependency(c, f, name, n)
			return false
		}
		return true
	})
	if root && app != "" {
		c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "release", Path: c.Path("_build/prod/rel/" + app), Build: "MIX_ENV=prod mix release", At: survey.Line1(name)})
	}
}

func text(n *code.Node) string { s, _ := survey.Literal(n); return s }

// dependency reads {:name, "~> 1.0", only: :dev} (Mix documentation, "deps").
func dependency(c *fact.Component, f *code.File, file string, n *code.Node) {
	spec, opts := "", n.Kids[1:]
	if s, ok := survey.Literal(n.Kids[1]); ok && f.Src[n.Kids[1].Off] == '"' {
		spec, opts = s, n.Kids[2:]
	}
	at := f.At(n.Kids[0])
	d := survey.Declare(n.Kids[0].Name, spec, version.Elixir, file, at)
	for _, o := range opts {
		if !o.Is(code.Pair) {
			continue
		}
		v := o.Kid(0)
		switch o.Name {
		case "only":
			list := []*code.Node{v}
			if v.Is(code.Array) {
				list = v.Kids
			}
			d.Dev = len(list) > 0
			for _, x := range list {
				d.Dev = d.Dev && (text(x) == "dev" || text(x) == "test" || text(x) == "docs")
			}
		case "path", "in_umbrella", "git", "github":
			d.Linked, d.Pinned = true, true
			if p := text(v); o.Name == "path" && p != "" {
				if _, in := source.Join(source.Dir(file), p); !in {
					c.Outside = append(c.Outside, fact.Path{Text: p, At: survey.Quoted(f, v)})
				}
			}
		case "runtime", "override", "app":
		case "optional":
			d.Optional = v.Is(code.True)
		}
	}
	c.Dependencies = append(c.Dependencies, d)
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(*source.Tree, *fact.Component, string) survey.Modules {
	return survey.Plain{}
}

// Sources implements survey.Compiler: what lies in lib/ and the umbrella's
// applications, and the settings.
func (r *Runtime) Sources(t *source.Tree, c *fact.Component) []string {
	list := survey.SourcesIn(t, c, []string{"lib", "config"}, ".ex")
	return append(list, survey.SourcesIn(t, c, []string{"lib", "config"}, ".exs")...)
}

// Target implements survey.Targeter: the program of a release, bin/NAME start
// (Mix documentation, "mix release").
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if _, ok, _ := f.Flag("-S"); ok && f.Program == "elixir" { // a script on the path, as mix is (elixir --help)
		return nil, "", true
	}
	for _, a := range c.Artefacts {
		name := path.Base(a.Path)
		if a.Kind != "release" || path.Base(f.Path) != name || len(f.Args) == 0 || !strings.Contains(f.Path, "bin/") {
			continue
		}
		switch f.Args[0].Text {
		case "start", "start_iex", "daemon", "foreground":
			return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: a.Path + "/bin/" + name}, "", true
		}
	}
	return nil, "", false
}

// Entry implements survey.Runtime: hosts run the server of Phoenix, or the
// application.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	if _, ok := c.Dep("phoenix"); ok {
		return "mix phx.server", c.Path("mix.exs"), true
	}
	if t.Has(c.Path("mix.exs")) {
		return "mix run --no-halt", c.Path("mix.exs"), true
	}
	return "", "", false
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(*source.Tree, *fact.Component) (string, bool) { return "", false }

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }
