package ship

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
)

// beside are folders that package managers fill beside a manifest, with a file
// by which they are known: a folder of that name may be something else. Go's
// vendor folder is meant to be tracked.
var beside = map[string][]struct{ folder, sign, what string }{
	"php": {{"vendor", "vendor/autoload.php", "Composer's packages"}}, "ruby": {{"vendor/bundle", ".gemspec", "gems"}, {".bundle", "config", "Bundler's settings of this machine"}}, "elixir": {{"deps", "mix.exs", "Mix's packages"}, {"_build", ".beam", "what Mix compiled"}},
	"rust": {{"target", ".rustc_info.json", "what Cargo compiled"}}, "java": {{".gradle", ".lock", "Gradle's cache"}}, "dotnet": {{"obj", "project.assets.json", "what NuGet restored"}},
}

var dependencies = &rules.Rule{
	ID: "ship/dependencies", Level: rules.Risk, Title: "a dependency folder goes up", Doc: doc("dependencies"),
	Tree: func(p *rules.TreePass) {
		type folder struct {
			name, what string
			n          int
		}
		var list []*folder
		at := map[string]*folder{}
		for _, e := range p.Tree.Entries {
			if !e.Tracked {
				continue
			}
			dir, what, ok := source.DependencyPath(e.Path)
			if !ok && strings.HasSuffix(e.Path, "/pyvenv.cfg") {
				dir, what, ok = source.Dir(e.Path), "a Python virtual environment", true
			}
			if !ok {
				continue
			}
			f := at[dir]
			if f == nil {
				f = &folder{name: dir, what: what}
				at[dir] = f
				list = append(list, f)
			}
		}
		for _, c := range p.Components {
			for _, o := range beside[c.Runtime] {
				dir := c.Path(o.folder)
				for _, e := range p.Tree.Below(dir) {
					if e.Tracked && strings.HasSuffix(e.Path, o.sign) {
						list = append(list, &folder{name: dir, what: o.what})
						break
					}
				}
			}
		}
		for _, f := range list {
			if path.Base(f.name) == "__pycache__" {
				continue // harmless, and named by nobody
			}
			if slices.ContainsFunc(list, func(g *folder) bool { return strings.HasPrefix(f.name, g.name+"/") }) {
				continue // lies in another
			}
			f.n = 0
			for _, e := range p.Tree.Below(f.name) {
				if e.Tracked {
					f.n++
				}
			}
			files := fmt.Sprintf("%d files", f.n)
			if f.n == 1 {
				files = "1 file"
			}
			p.Report(0, "git", rules.Finding{Where: place.Whole(f.name), Message: fmt.Sprintf("%s (%s) is tracked, %s: it holds what this machine installed, not what the host needs", f.name, f.what, files), Remedy: fmt.Sprintf("git rm -r --cached %s, and %s/ in .gitignore", f.name, path.Base(f.name))})
		}
	},
}
