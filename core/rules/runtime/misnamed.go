package runtime

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey"
)

// exact are names that must be written exactly so, with what reads them.
var exact = []struct{ name, reader string }{
	{"Procfile", "hosts that start processes"},
	{"Dockerfile", "container builds"},
	{"Containerfile", "container builds"},
	{"package.json", "npm"},
	{"package-lock.json", "npm"},
	{"requirements.txt", "pip installs and hosts"},
	{"pyproject.toml", "Python's build tools"},
	{"Pipfile", "Pipenv"},
	{"manage.py", "Django"},
	{"runtime.txt", "hosts"},
	{".nvmrc", "nvm and hosts"},
	{".node-version", "version managers and hosts"},
	{".python-version", "pyenv and hosts"},
	{".tool-versions", "version managers"},
	{".dockerignore", "container builds"},
	{".gitignore", "git"},
}

// between are the signs between words of a name.
var between = strings.NewReplacer("-", "", "_", "", " ", "", ".", "")

// stem takes off what people add by mistake: letter case, a plural, an
// extension, a dot at the front, the sign between words.
func stem(name string) string {
	s := strings.ToLower(name)
	for _, ext := range []string{".txt", ".text", ".yml", ".yaml", ".md", ".sh", ".json", ".toml", ".py"} {
		s = strings.TrimSuffix(s, ext)
	}
	s = strings.TrimPrefix(s, ".")
	return strings.TrimSuffix(between.Replace(s), "s")
}

// extensionOf says whether a near miss has the extension that it may have.
func nearMiss(name, want string) bool {
	if name == want || stem(name) != stem(want) {
		return false
	}
	if strings.EqualFold(name, want) {
		return true
	}
	we, ne := path.Ext(want), path.Ext(name)
	switch want {
	case "Procfile", "Dockerfile", "Containerfile", "Pipfile":
		return ne == "" || ne == ".txt" || ne == ".text" || ne == ".yml" && want == "Procfile" || ne == ".sh" && want == "Procfile" || ne == ".toml" && want == "Pipfile"
	case ".nvmrc", ".node-version", ".python-version", ".tool-versions", ".dockerignore", ".gitignore":
		rest := strings.TrimPrefix(name, ".")
		return ne == ".txt" || !strings.HasPrefix(name, ".") && strings.EqualFold(rest, strings.TrimPrefix(want, ".")) || strings.HasPrefix(name, ".") && ne == path.Ext(name) && strings.Count(name, ".") == 1
	case "requirements.txt":
		return ne == ".txt" || ne == ".text" || ne == "" || ne == ".md"
	case "manage.py":
		return false
	}
	return strings.EqualFold(we, ne) || ne == ""
}

// stems are the stems of the exact names, so that most files are passed over
// at once.
var stems = func() map[string]bool {
	m := map[string]bool{}
	for _, x := range exact {
		m[stem(x.name)] = true
	}
	return m
}()

var misnamed = &rules.Rule{
	ID: "runtime/misnamed", Level: rules.Risk, Title: "a near miss of a name that must be exact", Doc: doc("misnamed"),
	Tree: func(p *rules.TreePass) {
		dirs := map[string]bool{"": true}
		for _, c := range p.Components {
			dirs[c.Dir] = true
		}
		for _, e := range p.Tree.Entries {
			dir := source.Dir(e.Path)
			if !e.OnDisk || !dirs[dir] || dir != "" && survey.Elsewhere(dir) {
				continue
			}
			base := path.Base(e.Path)
			if len(base) > 24 || !stems[stem(base)] {
				continue
			}
			for _, x := range exact {
				if !nearMiss(base, x.name) || p.Tree.Has(path.Join(dir, x.name)) {
					continue
				}
				at := place.Span{File: e.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
				level := rules.Risk
				switch x.name {
				case "Procfile", "package.json", "requirements.txt", "Pipfile", "pyproject.toml":
					level = rules.Blocker
				}
				p.Report(level, "", rules.Finding{Where: at, Message: fmt.Sprintf("%s is named %s; %s look for %s, exactly so", e.Path, base, x.reader, x.name), Remedy: fmt.Sprintf("git mv %s %s", e.Path, path.Join(dir, x.name))})
				break
			}
		}
	},
}
