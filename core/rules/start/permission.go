package start

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/survey"
)

// granted reads what a command of Deno grants: flags before the file only
// (Deno manual, "Security and permissions", 2026-11).
func granted(s *fact.Start) (allow map[string][]string, all bool, late map[string]place.Span) {
	allow, late = map[string][]string{}, map[string]place.Span{}
	short := map[string]string{"-N": "net", "-E": "env", "-R": "read", "-W": "write", "-S": "sys", "-I": "import"}
	target, has := s.Final.Target()
	past := false
	for _, w := range s.Final.Args {
		if has && w.At == target.At {
			past = true
			continue
		}
		flag, list, listed := strings.Cut(w.Text, "=")
		name := ""
		if len(flag) > 1 && flag[0] == '-' && flag[1] != '-' { // -NE stands for -N -E
			for _, letter := range flag[1:] {
				if letter == 'A' {
					flag = "-A"
				}
				if n := short["-"+string(letter)]; n != "" {
					if name != "" && !past {
						allow[name] = append(allow[name], "")
					}
					name = n
				}
			}
		}
		if rest, ok := strings.CutPrefix(flag, "--allow-"); ok {
			name = rest
		}
		switch {
		case flag == "-A", name == "all", flag == "-P", flag == "--permission-set":
			if !past {
				return allow, true, late
			}
			late["net"], late["env"], late["read"] = w.At, w.At, w.At
		case name == "":
		case past:
			late[name] = w.At
		case listed:
			allow[name] = append(allow[name], strings.Split(list, ",")...)
		default:
			allow[name] = append(allow[name], "")
		}
	}
	return allow, false, late
}

// covers reports whether a list of what is allowed holds a name; an empty
// entry stands for everything.
func covers(list []string, match func(string) bool) bool {
	for _, x := range list {
		if x == "" || match(x) {
			return true
		}
	}
	return false
}

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
			allow, all, late := granted(s)
			if all || p.Component.Granted {
				continue
			}
			report := func(kind, flag, need string, at place.Span, level rules.Level) {
				f := rules.Finding{Where: s.Final.At, Remedy: flag,
					Message: fmt.Sprintf("%s, and deno is not given %s: the call fails at once", need, flag),
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
				if env[v.Name] || covers(allow["env"], func(x string) bool {
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
		host := map[string]string{"any": "0.0.0.0", "loopback": "127.0.0.1"}[out.Interface]
		port := fmt.Sprint(out.Port)
		if covers(allow["net"], func(x string) bool {
			return out.Outcome != "listens" || host == "" || x == host || x == host+":"+port || x == "localhost" && host == "127.0.0.1" || x == ":"+port || x == "localhost:"+port && host == "127.0.0.1" || strings.HasPrefix(x, "[::]")
		}) {
			continue
		}
		report("net", "--allow-net", "the code listens", l.At, 0)
		return
	}
}
