package ship

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/value"
)

var letterCase = &rules.Rule{
	ID: "ship/case", Level: rules.Blocker, Title: "a path whose letter case differs from the file's", Doc: doc("case"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
			say := func(at place.Span, written, file, remedy string) {
				p.Report(on, 0, rules.Finding{Where: at, Message: fmt.Sprintf("%s, and the file is named %s: on Linux these are two names", written, file), Trail: []value.Step{{At: place.Span{File: file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Note: "the file"}}, Remedy: remedy})
			}
			if t := on.Code.Target; t != nil && t.Case != "" {
				say(t.At, "starts "+t.Named, t.Case, strings.TrimPrefix(strings.TrimPrefix(t.Case, on.Code.Final.Dir), "/"))
			}
			if m := on.Code.Final.Missing; m != nil && m.Kind == "file" {
				if file := folded(p.Tree, on.Code.Final.Dir, m.Name); file != "" {
					say(m.At, "runs "+m.Name, file, strings.TrimPrefix(strings.TrimPrefix(file, on.Code.Final.Dir), "/"))
				}
			}
			seen := map[string]bool{}
			for _, i := range on.Code.Imports {
				if !i.Missing || i.Case == "" || i.TypeOnly || i.Optional || seen[i.From+i.Module] {
					continue
				}
				seen[i.From+i.Module] = true
				say(i.At, "imports "+i.Module, i.Case, "import "+as(i.Module, i.Case))
			}
			// On a disk that does not tell letter case apart, the index may
			// have another case than the folder.
			if on.Host.Route == "image" {
				for _, c := range copies(on) {
					for _, s := range c.Sources {
						at := path.Join(on.Code.Descriptor.Image.Context, s)
						if s == "." || strings.ContainsAny(s, "*?[$") || p.Tree.Has(at) || p.Tree.HasDir(at) {
							continue
						}
						if e, ok := p.Tree.Fold(at); ok {
							say(c.At, "copies "+s, e.Path, path.Join(path.Dir(s), path.Base(e.Path)))
						}
					}
				}
				continue
			}
			for _, n := range needs(on.Code) {
				if s := p.Tree.State(n.file); s != source.Untracked {
					continue
				}
				if e, ok := p.Tree.Fold(n.file); ok && e.Tracked {
					p.Report(on, 0, rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, and git has it as %s: on Linux these are two names", n.file, e.Path), Remedy: fmt.Sprintf("git mv %s %s", e.Path, n.file)})
				}
			}
		}
	},
}

// folded finds the file of a path seen from a folder whose letters have
// another case.
func folded(t *source.Tree, dir, name string) string {
	if p, ok := source.Join(dir, name); ok {
		if e, ok := t.Fold(p); ok {
			return e.Path
		}
	}
	return ""
}

// as writes a module path with the letters of a file.
func as(module, file string) string {
	if !strings.Contains(module, "/") { // dotted
		file = strings.TrimSuffix(strings.TrimSuffix(file, "/__init__.py"), ".py")
		parts := strings.Split(file, "/")
		names := strings.Split(strings.TrimLeft(module, "."), ".")
		if len(names) <= len(parts) {
			return module[:len(module)-len(strings.TrimLeft(module, "."))] + strings.Join(parts[len(parts)-len(names):], ".")
		}
		return file
	}
	names, parts := strings.Split(module, "/"), strings.Split(file, "/")
	if path.Ext(names[len(names)-1]) == "" {
		last := parts[len(parts)-1]
		parts[len(parts)-1] = strings.TrimSuffix(last, path.Ext(last))
		if !strings.EqualFold(parts[len(parts)-1], names[len(names)-1]) {
			parts = parts[:len(parts)-1] // the index of a folder
		}
	}
	for i, j := len(names)-1, len(parts)-1; i >= 0 && j >= 0 && strings.EqualFold(names[i], parts[j]); i, j = i-1, j-1 {
		names[i] = parts[j]
	}
	return strings.Join(names, "/")
}
