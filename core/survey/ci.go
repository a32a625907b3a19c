package survey

import (
	"bytes"
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/version"
)

// Workflow is a version that a CI workflow sets, with the folder that the
// workflow is for.
type Workflow struct {
	Dir string
	Pin fact.Pin
}

// ciKeys are the names of runtimes in the keys of CI workflows; -version,
// _version, Version or -versions follows.
var ciKeys = map[string]string{
	"node": "node", "nodejs": "node", "python": "python", "ruby": "ruby", "java": "java", "jdk": "java", "go": "go", "golang": "go", "php": "php", "dotnet": "dotnet",
	"elixir": "elixir", "otp": "erlang", "deno": "deno", "bun": "bun", "rust": "rust",
}

// Workflows reads the versions that CI workflow files set. No maker's format
// is known here: a workflow is a YAML file in a folder whose name begins with
// a dot, or one at the root, that has jobs, stages, steps or scripts, and a
// version under a key that says so.
func Workflows(t *source.Tree) []Workflow {
	var list []Workflow
	for _, e := range t.Entries {
		base := path.Base(e.Path)
		if !strings.HasSuffix(base, ".yml") && !strings.HasSuffix(base, ".yaml") || !e.OnDisk || e.Link || e.Ignored {
			continue
		}
		dir := source.Dir(e.Path)
		dotted := strings.HasPrefix(e.Path, ".") || strings.HasPrefix(base, ".") || strings.Contains(e.Path, "/.")
		if !dotted && dir != "" || strings.Count(e.Path, "/") > 5 || strings.Contains(base, "compose") || base == "pnpm-workspace.yaml" || base == "pnpm-lock.yaml" {
			continue
		}
		f, err := t.Code(e.Path)
		if err != nil || !bytes.Contains(f.Data, []byte("ersion")) && !bytes.Contains(f.Data, []byte("image")) {
			continue
		}
		if !bytes.Contains(f.Data, []byte("steps")) && !bytes.Contains(f.Data, []byte("script")) && !bytes.Contains(f.Data, []byte("jobs")) && !bytes.Contains(f.Data, []byte("stage")) && !bytes.Contains(f.Data, []byte("commands")) {
			continue
		}
		if !dotted && !bytes.Contains(f.Data, []byte("\nsteps:")) && !bytes.Contains(f.Data, []byte("\njobs:")) && !bytes.Contains(f.Data, []byte("\nstages:")) && !bytes.Contains(f.Data, []byte("\npipeline")) && !bytes.HasPrefix(f.Data, []byte("pipeline")) && !bytes.HasPrefix(f.Data, []byte("stages:")) && !bytes.HasPrefix(f.Data, []byte("jobs:")) && !bytes.HasPrefix(f.Data, []byte("steps:")) {
			continue // at the root only what plainly is one
		}
		docs, err := document.YAML(e.Path, f.Data, f.Lines())
		if err != nil {
			continue
		}
		for dir != "" && (path.Base(dir)[0] == '.' || strings.Contains(dir, "/.") || dir[0] == '.') {
			dir = source.Dir(dir)
		}
		for _, d := range docs {
			found := map[string]*fact.Pin{}
			d.Walk(func(_ []string, n *document.Node) { ciNode(n, found) })
			for _, what := range []string{"node", "python", "ruby", "java", "go", "php", "dotnet", "elixir", "erlang", "deno", "bun", "rust"} {
				if p := found[what]; p != nil {
					list = append(list, Workflow{dir, *p})
				}
			}
		}
	}
	return list
}

// ciNode takes the versions of one key; several are a choice of all of them.
func ciNode(n *document.Node, found map[string]*fact.Pin) {
	key := strings.ToLower(strings.NewReplacer("-", "", "_", "").Replace(n.Key))
	what := ""
	if name, ok := strings.CutSuffix(strings.TrimSuffix(key, "s"), "version"); ok {
		what = ciKeys[name]
	}
	if what == "" && n.Kind == document.List {
		what = ciKeys[key] // a matrix: node: [20, 22]
	}
	values := []*document.Node{n}
	if n.Kind == document.List {
		values = n.Kids
	}
	for _, v := range values {
		text, ok := v.Scalar()
		if !ok {
			continue
		}
		if n.Key == "image" && strings.Contains(text, ":") && !strings.Contains(text, "$") {
			name, tag, _ := strings.Cut(text, ":")
			if w := Product(name); w != "" && !strings.Contains(name, "/") {
				if im := version.Tag(name, tag); im.Known {
					joinPin(found, w, fact.Pin{What: w, Text: text, From: "CI", Rank: RankCI, At: v.At(), Set: im.Set, Known: true})
				}
			}
			continue
		}
		if what == "" {
			continue
		}
		for line := range strings.SplitSeq(text, "\n") {
			line = strings.TrimSpace(line)
			if line == "" {
				continue
			}
			p := ReadPin(what, "CI", line, RankCI, v.At())
			if v.Kind == document.Number && strings.HasSuffix(line, "0") && strings.Contains(line, ".") {
				p.Wrong = "YAML reads " + line + " as the number " + strings.TrimRight(line, "0")
				p.Form = `"` + line + `"`
			} else if !p.Known {
				p.Wrong = "" // a word of the workflow's own
			}
			joinPin(found, what, p)
		}
	}
}

// joinPin adds a pin to those of the workflow: a matrix is the union.
func joinPin(found map[string]*fact.Pin, what string, p fact.Pin) {
	old := found[what]
	switch {
	case old == nil:
		found[what] = &p
	case old.Wrong != "":
	case p.Wrong != "":
		found[what] = &p
	case old.Known && p.Known:
		if old.Set = old.Set.Union(p.Set); !strings.Contains(", "+old.Text+",", ", "+p.Text+",") {
			old.Text += ", " + p.Text
		}
	default:
		old.Known = false
	}
}
