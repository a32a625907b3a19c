package start

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/source"
)

// shipped reports whether the start's target reaches the host at all; the
// ship rules say where it is kept back.
var targetMissing = &rules.Rule{
	ID: "start/target-missing", Level: rules.Blocker, Title: "the file or module to start is not there", Doc: doc("target-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			s := on.Start
			if m := s.Final.Missing; m != nil && m.Kind == "file" {
				if q, ok := source.Join(s.Final.Dir, m.Name); ok {
					if _, ok := p.Tree.Fold(q); ok {
						continue // ship/case
					}
				}
				p.Report(on, 0, rules.Finding{Where: m.At, Trail: s.Final.Steps, Message: fmt.Sprintf("runs %s, which is nowhere in the tree", m.Name), Remedy: near(p, s, m.Name)})
				continue
			}
			if _, ok := unbuilt(p, on); ok {
				continue // start/build-missing
			}
			if f, ok := otherArtefact(p, s); ok {
				p.Report(on, 0, f)
				continue
			}
			t := s.Target
			if t == nil || t.File != "" || t.Built || t.Case != "" {
				continue
			}
			what := t.Named
			if t.Kind == command.CallableTarget || s.Final.Via != "" {
				what = "the module " + t.Module
			}
			from := s.Final.Dir
			if from == "" {
				from = "the root of the tree"
			}
			if t.Folder {
				p.Report(on, 0, rules.Finding{Where: t.At, Trail: s.Final.Steps, Message: fmt.Sprintf("serves the folder %s, which is nowhere seen from %s: the server ends at start", t.Named, from), Remedy: near(p, s, t.Named)})
				continue
			}
			if t.Meant != "" {
				p.Report(on, 0, rules.Finding{Where: t.At, Trail: s.Final.Steps, Message: fmt.Sprintf("starts the class %s, which no source of its package declares; %s has a main method", t.Named, t.Meant), Remedy: t.Meant})
				continue
			}
			p.Report(on, 0, rules.Finding{Where: t.At, Trail: s.Final.Steps, Message: fmt.Sprintf("starts %s, and there is no such file seen from %s", what, from), Remedy: near(p, s, t.Named)})
		}
	},
}

// near looks for what was probably meant: a file of that name elsewhere, or
// the usual start file.
func near(p *rules.Pass, s *fact.Start, name string) string {
	if s.Target != nil && s.Target.Kind == command.FolderTarget { // what a build writes
		for _, a := range p.Component.Artefacts {
			if rel, ok := strings.CutPrefix(a.Path, s.Final.Dir); ok && a.Kind == "files" && a.Path != "" {
				return strings.TrimPrefix(rel, "/")
			}
		}
	}
	module, callable, has := strings.Cut(name, ":")
	base := path.Base(strings.ReplaceAll(module, ".", "/"))
	if path.Ext(name) != "" && !has && (s.Target == nil || s.Target.Kind != command.CallableTarget) {
		base = path.Base(name)
	}
	python := p.Component.Runtime == "python"
	var found []string
	for _, e := range p.Tree.Below(p.Component.Dir) {
		b := path.Base(e.Path)
		if _, _, dep := source.DependencyPath(e.Path); dep || !e.OnDisk {
			continue
		}
		if strings.EqualFold(b, base) || strings.EqualFold(strings.TrimSuffix(b, path.Ext(b)), strings.TrimSuffix(base, path.Ext(base))) && (strings.HasSuffix(b, ".js") || strings.HasSuffix(b, ".py") || strings.HasSuffix(b, ".mjs") || strings.HasSuffix(b, ".ts")) {
			found = append(found, e.Path)
		}
	}
	if len(found) == 0 {
		names := []string{"server.js", "app.js", "index.js", "src/server.js", "src/index.js", "src/app.js", "main.js"}
		if python {
			names = []string{"app.py", "main.py", "wsgi.py", "server.py", "src/app.py", "src/main.py", "app/main.py"}
		}
		for _, n := range names {
			if p.Tree.Has(p.Component.Path(n)) {
				found = append(found, p.Component.Path(n))
			}
		}
	}
	if len(found) == 0 {
		return "the path of the file that starts the component, seen from where the command runs"
	}
	rel := found[0]
	if d := s.Final.Dir; d != "" {
		rel = strings.TrimPrefix(rel, d+"/")
	}
	if python && s.Target != nil && s.Target.Kind == command.CallableTarget {
		found := strings.ReplaceAll(strings.TrimSuffix(rel, ".py"), "/", ".")
		if !has {
			return found
		}
		return found + ":" + callable
	}
	return rel
}

// otherArtefact finds a start from the folder of an artefact that the build
// makes under another name.
func otherArtefact(p *rules.Pass, s *fact.Start) (rules.Finding, bool) {
	t := s.Target
	if t == nil || !t.Built || t.File == "" || p.Component.Runtime == "node" || p.Component.Runtime == "python" {
		return rules.Finding{}, false
	}
	var beside []fact.Artefact
	for _, a := range p.Component.Artefacts {
		if path.Dir(a.Path) != path.Dir(t.File) || path.Ext(a.Path) != path.Ext(t.File) {
			continue
		}
		if strings.ContainsAny(a.Path, "$*?") || made(path.Base(t.File), path.Base(a.Path)) {
			return rules.Finding{}, false
		}
		beside = append(beside, a)
	}
	if why, _, _ := unfit(p.Component, s); len(beside) == 0 || why != "" || p.Tree.Has(t.File) {
		return rules.Finding{}, false
	}
	a := beside[0]
	return rules.Finding{
		Where:   t.At,
		Trail:   append(s.Final.Steps[:len(s.Final.Steps):len(s.Final.Steps)], rules.Step(a.At, "the build makes "+a.Path)),
		Message: fmt.Sprintf("starts %s, and the build makes %s", t.Named, path.Base(a.Path)),
		Remedy:  path.Join(path.Dir(t.Named), path.Base(a.Path)),
	}, true
}
