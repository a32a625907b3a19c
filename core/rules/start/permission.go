package start

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/survey"
)

var permission = &rules.Rule{
	ID: "start/permission", Level: rules.Blocker, Title: "the runtime is not granted what the code needs", Doc: doc("permission"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			s := on.Start
			if s == nil || s.Program == nil || s.Final.Program != "deno" || s.Target == nil || s.Target.File == "" {
				continue
			}
			free := s.Final.Free()
			verb := ""
			if len(free) > 0 {
				verb = free[0].Text
			}
			if verb == "task" || verb == "test" {
				continue
			}
			allow, all, late := survey.Granted(s)
			if all || p.Component.Granted {
				continue
			}
			report := func(kind, flag, need string, at place.Span, level rules.Level) {
				part := ""
				if len(allow[kind]) > 0 {
					part = " for that"
				}
				f := rules.Finding{Where: s.Final.At, Remedy: flag,
					Message: fmt.Sprintf("%s, and deno is not given %s%s: the call fails at once", need, flag, part),
					Trail:   append(s.Final.Steps[:len(s.Final.Steps):len(s.Final.Steps)], rules.Step(at, need))}
				if w, ok := late[kind]; ok {
					f.Where = w
					f.Message = fmt.Sprintf("%s, and the flag stands after the file, where it is given to the program and not to deno", need)
					f.Remedy = flag + " before " + s.Target.Named
				}
				p.Report(on, level, f)
			}
			listens(on, verb, allow, report)
			env := map[string]bool{}
			for _, v := range s.Variables {
				if env[v.Name] || survey.Covers(allow["env"], func(x string) bool {
					ok, _ := path.Match(x, v.Name)
					return ok
				}) {
					continue
				}
				env[v.Name] = true
				if len(env) == 1 { // one flag mends them all
					report("env", "--allow-env", "the code reads the variable "+v.Name, v.At, 0)
				}
			}
			for _, need := range survey.Needs(s) {
				if len(allow[need.Kind]) == 0 {
					report(need.Kind, "--allow-"+need.Kind, "the code calls "+need.Call, need.At, rules.Risk)
				}
			}
		}
	},
}

// listens reports a listener that the permissions do not cover.
func listens(on *rules.On, verb string, allow map[string][]string, report func(kind, flag, need string, at place.Span, level rules.Level)) {
	if verb == "serve" {
		return // it grants what it needs to listen
	}
	for _, l := range on.Start.Listeners {
		out := l.Under(on.Ported)
		if l.Via != "code" || out.Outcome == "skipped" || strings.HasPrefix(out.Interface, "unix:") {
			continue
		}
		told, kept := *l, allow["net"]
		told.Net = nil
		need := "the code listens"
		if out := told.Under(on.Ported); len(kept) > 0 {
			if !survey.Forbidden(kept, out) {
				continue
			}
			need += fmt.Sprintf(" on port %d", out.Port)
		}
		report("net", "--allow-net", need, l.At, 0)
		return
	}
}
