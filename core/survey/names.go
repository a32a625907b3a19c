package survey

import (
	"path"
	"sort"
	"strings"
	"sync"

	"ubique/core/fact"
)

// exactName is a name that is compared letter by letter by what reads it.
type exactName struct {
	name, reader string
	runtime      string // only components of this runtime have it; empty: any
	manifest     bool   // declares packages: another manifest makes it needless
}

// exactNames are the names, with what looks for them. Source: the
// documentation of each reader, 2026.
var exactNames = []exactName{
	{"Procfile", "hosts that start processes", "", false},
	{"Dockerfile", "container builds", "", false},
	{"Containerfile", "container builds", "", false},
	{"package.json", "npm and hosts", "node", true},
	{"package-lock.json", "npm", "node", false},
	{"pnpm-lock.yaml", "pnpm", "node", false},
	{"yarn.lock", "Yarn", "node", false},
	{"requirements.txt", "pip and hosts", "python", true},
	{"pyproject.toml", "Python's build tools", "python", true},
	{"Pipfile", "Pipenv", "python", true},
	{"poetry.lock", "Poetry", "python", false},
	{"manage.py", "Django", "python", false},
	{"runtime.txt", "hosts", "python", false},
	{".nvmrc", "nvm and hosts", "node", false},
	{".node-version", "version managers and hosts", "node", false},
	{".python-version", "pyenv and hosts", "python", false},
	{"Gemfile", "Bundler and hosts", "ruby", true},
	{"Gemfile.lock", "Bundler", "ruby", false},
	{"config.ru", "servers for Rack", "ruby", false},
	{".ruby-version", "version managers and hosts", "ruby", false},
	{"pom.xml", "Maven and hosts", "java", true},
	{"build.gradle", "Gradle", "java", true},
	{"settings.gradle", "Gradle", "java", false},
	{".java-version", "version managers", "java", false},
	{".sdkmanrc", "version managers", "java", false},
	{"go.mod", "the Go command", "go", true},
	{"go.sum", "the Go command", "go", false},
	{"composer.json", "Composer and hosts", "php", true},
	{"composer.lock", "Composer", "php", false},
	{"index.php", "web servers", "php", false},
	{"global.json", "the .NET command", "dotnet", false},
	{"Cargo.toml", "Cargo", "rust", true},
	{"Cargo.lock", "Cargo", "rust", false},
	{"rust-toolchain.toml", "rustup", "rust", false},
	{"mix.exs", "Mix", "elixir", true},
	{"mix.lock", "Mix", "elixir", false},
	{"deno.json", "Deno", "deno", true},
	{"deno.lock", "Deno", "deno", false},
	{".tool-versions", "version managers", "", false},
	{".dockerignore", "container builds", "", false},
	{".gitignore", "git", "", false},
	{".gitattributes", "git", "", false},
}

// between are the signs between words of a name.
var between = strings.NewReplacer("-", "", "_", "", " ", "", ".", "")

// stem takes off what people add by mistake: letter case, a plural, an
// extension, a dot at the front, the sign between words.
func stem(name string) string {
	s := strings.ToLower(name)
	for _, ext := range []string{".txt", ".text", ".yml", ".yaml", ".md", ".sh", ".json", ".toml", ".py", ".xml", ".lock", ".rb", ".exs", ".gradle", ".mod", ".sum", ".php", ".ru"} {
		s = strings.TrimSuffix(s, ext)
	}
	s = strings.TrimPrefix(s, ".")
	return strings.TrimSuffix(between.Replace(s), "s")
}

// nearly tells whether a name is a slip of the one that is wanted, and not a
// file of its own.
func nearly(name, want string) bool {
	if name == want || name == "rust-toolchain" || stem(name) != stem(want) {
		return false
	}
	if strings.EqualFold(name, want) {
		return true
	}
	we, ne := path.Ext(want), path.Ext(name)
	switch want {
	case "Procfile", "Dockerfile", "Containerfile", "Pipfile", "Gemfile":
		return ne == "" || ne == ".txt" || ne == ".text" || ne == ".yml" && want == "Procfile" || ne == ".sh" && want == "Procfile" || ne == ".toml" && want == "Pipfile" || ne == ".rb" && want == "Gemfile"
	case ".nvmrc", ".node-version", ".python-version", ".ruby-version", ".java-version", ".sdkmanrc", ".tool-versions", ".dockerignore", ".gitignore", ".gitattributes":
		rest := strings.TrimPrefix(name, ".")
		return ne == ".txt" || !strings.HasPrefix(name, ".") && strings.EqualFold(rest, strings.TrimPrefix(want, ".")) || strings.HasPrefix(name, ".") && strings.Count(name, ".") == 1
	case "requirements.txt":
		return ne == ".txt" || ne == ".text" || ne == ""
	case "manage.py", "config.ru", "index.php", "global.json", "go.sum":
		return false
	case "yarn.lock", "poetry.lock", "Gemfile.lock", "composer.lock", "Cargo.lock", "mix.lock", "deno.lock":
		return false
	}
	return strings.EqualFold(we, ne) || ne == ""
}

// stems are the stems of the exact names, so that most files are passed over
// at once.
var stems = sync.OnceValue(func() map[string]bool {
	m := map[string]bool{}
	for _, x := range exactNames {
		m[stem(x.name)] = true
	}
	return m
})

// NearMisses finds the names of a folder that are nearly right, where the
// right one is not beside them. The runtime is the component's, empty where
// the folder holds none; a component with manifests needs no other, so that a
// packages.json of data is only a file.
func NearMisses(f Folder, runtime string, manifests bool) []fact.NearMiss {
	var list []fact.NearMiss
	known := stems()
	for base := range f.Names {
		if len(base) > 24 || !known[stem(base)] {
			continue
		}
		for _, x := range exactNames {
			if !nearly(base, x.name) || f.Has(x.name) || x.runtime != "" && runtime != "" && x.runtime != runtime {
				continue
			}
			if x.manifest && manifests && !strings.EqualFold(base, x.name) {
				continue
			}
			list = append(list, fact.NearMiss{Path: path.Join(f.Dir, base), Exact: x.name, Reader: x.reader})
			break
		}
	}
	sort.Slice(list, func(i, j int) bool { return list[i].Path < list[j].Path })
	return list
}
