// Package ship holds the rules on what reaches the host.
package ship

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/value"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{untracked, ignored, dependencies}

// need is a file that a start needs, at the line that needs it.
type need struct {
	file string
	at   place.Span
	why  string
}

// needs lists the files of the tree that a start needs: the target, and what
// it imports.
func needs(s *fact.Start) []need {
	var list []need
	seen := map[string]bool{}
	add := func(file string, at place.Span, why string) {
		if file != "" && !seen[file] && at.Line > 0 {
			seen[file] = true
			list = append(list, need{file, at, why})
		}
	}
	if s.Target != nil && s.Target.Sourced == "" && !s.Target.Built {
		add(s.Target.File, s.Target.At, "the start command loads it")
	}
	if s.Target != nil && s.Target.Sourced != "" {
		add(s.Target.Sourced, s.Target.At, "the build makes the start file of it")
	}
	for _, st := range s.Final.Steps {
		if strings.HasPrefix(st.Note, "run by ") {
			add(st.At.File, s.At, "the start command runs it")
		}
	}
	for _, i := range s.Imports {
		if i.File != "" && !i.TypeOnly && !i.Optional {
			add(i.File, i.At, "imported here")
		}
	}
	return list
}

func withheld(p *rules.Pass, state source.State, report func(on *rules.On, n need)) {
	for _, on := range p.On {
		if on.Code == nil || on.Host.Route == "image" {
			continue
		}
		for _, n := range needs(on.Code) {
			if p.Tree.State(n.file) == state {
				report(on, n)
			}
		}
	}
}

var untracked = &rules.Rule{
	ID: "ship/untracked", Level: rules.Blocker, Title: "needed, but git does not track it", Doc: doc("untracked"),
	Check: func(p *rules.Pass) {
		withheld(p, source.Untracked, func(on *rules.On, n need) {
			p.Report(on, 0, rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which is on this disk and not in git: the host does not get it", n.file), Trail: []value.Step{{At: place.Span{File: n.file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Note: "not tracked"}}, Remedy: "git add " + n.file})
		})
	},
}

var ignored = &rules.Rule{
	ID: "ship/ignored", Level: rules.Blocker, Title: "needed, but an ignore rule keeps it out", Doc: doc("ignored"),
	Check: func(p *rules.Pass) {
		withheld(p, source.Ignored, func(on *rules.On, n need) {
			f := rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which an ignore rule keeps out: the host does not get it", n.file)}
			if at, ok := p.Tree.IgnoreRule(n.file); ok {
				f.Trail = []value.Step{{At: at, Note: "keeps it out"}}
			}
			f.Remedy = "!" + path.Base(n.file) + " after the ignore rule, or a build step that makes the file"
			p.Report(on, 0, f)
		})
		for _, on := range p.On {
			if on.Code == nil || on.Host.Route != "image" || on.Code.Descriptor == nil || on.Code.Descriptor.Image == nil {
				continue
			}
			im := on.Code.Descriptor.Image
			name := path.Join(im.Context, ".dockerignore")
			if im.Context == "" {
				name = ".dockerignore"
			}
			rule := newContextRules(p.Tree, name)
			for _, n := range needs(on.Code) {
				rel := strings.TrimPrefix(n.file, im.Context+"/")
				if at, out := rule.excludes(rel); out {
					p.Report(on, 0, rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which %s keeps out of the image", n.file, name), Trail: []value.Step{{At: at, Note: "keeps it out"}}, Remedy: "!" + rel + " at the end of " + name})
				}
			}
		}
	},
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
		for _, f := range list {
			if path.Base(f.name) == "__pycache__" {
				continue // harmless, and named by nobody
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
