package ship

import (
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
)

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
