package start

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
)

var disagree = &rules.Rule{
	ID: "start/disagree", Level: rules.Risk, Title: "two descriptors start different things", Doc: doc("disagree"),
	Check: func(p *rules.Pass) {
		type way struct {
			s    *fact.Start
			goal string
			rank int
		}
		var ways []way
		for _, s := range p.Component.Starts {
			if s.Process != "web" || s.Source == "usual entry" || s.Source == "start script" || s.Final.Reason != "" || s.Final.Missing != nil {
				continue
			}
			g := goal(s)
			if g == "" {
				continue
			}
			ways = append(ways, way{s, g, map[string]int{"package script": 1, "process file": 2, "container": 3}[s.Source]})
		}
		if len(ways) < 2 {
			return
		}
		for i, w := range ways { // what another way starts may run in the background
			for _, b := range w.s.Beside {
				if g := goal(b); slices.ContainsFunc(ways, func(x way) bool { return x.s != w.s && x.goal == g }) {
					ways[i].goal = g
				}
			}
		}
		count := map[string]int{}
		for _, w := range ways {
			count[w.goal]++
		}
		if len(count) == 1 {
			return
		}
		odd := ways[0]
		for _, w := range ways {
			if len(ways) > 2 && len(count) == 2 {
				if count[w.goal] == 1 {
					odd = w
				}
			} else if w.rank > odd.rank {
				odd = w
			}
		}
		f := rules.Finding{Where: at(odd.s), Message: fmt.Sprintf("the %s starts %s", odd.s.Source, show(odd.s))}
		for _, w := range ways {
			if w.s != odd.s {
				f.Trail = append(f.Trail, rules.Step(at(w.s), fmt.Sprintf("the %s starts %s", w.s.Source, show(w.s))))
				if w.goal != odd.goal && f.Remedy == "" {
					f.Remedy = w.s.Command
					f.Message += fmt.Sprintf(", the %s %s", w.s.Source, show(w.s))
				}
			}
		}
		f.Message += ": what runs depends on the host"
		p.ReportAll(0, f)
	},
}

// goal is what a start comes to, for comparing: the file, whatever the
// program that loads it.
func goal(s *fact.Start) string {
	if len(s.Listeners) > 0 {
		switch s.Listeners[0].Server {
		case "next", "next standalone":
			return "next"
		case "nitro", "sveltekit", "astro", "remix-serve":
			return s.Listeners[0].Server
		}
	}
	if s.Target != nil {
		if s.Target.Sourced != "" {
			return s.Target.Sourced
		}
		if s.Target.File != "" {
			if path.Base(s.Target.File) == "manage.py" && s.Config != nil {
				return "django"
			}
			if s.Config != nil && (strings.HasSuffix(s.Target.File, "wsgi.py") || strings.HasSuffix(s.Target.File, "asgi.py")) {
				return "django"
			}
			return s.Target.File
		}
		return "" // start/target-missing
	}
	if s.Final.Known != nil && s.Final.Known.Target == command.NoTarget {
		return s.Final.Program
	}
	return ""
}

func show(s *fact.Start) string {
	if s.Target != nil && s.Target.Sourced == "" {
		return s.Target.File
	}
	if s.Target != nil {
		return s.Target.Named
	}
	return s.Final.Program
}

func at(s *fact.Start) place.Span {
	if s.Target != nil && s.Target.At.Line > 0 {
		return s.Target.At
	}
	return s.At
}
