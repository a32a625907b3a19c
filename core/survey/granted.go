package survey

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
)

// Granted reads what a command of Deno grants: flags before the file only
// (Deno manual, "Security and permissions", 2026-11).
func Granted(s *fact.Start) (allow map[string][]string, all bool, late map[string]place.Span) {
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

// Covers reports whether a list of what is allowed holds a name; an empty
// entry stands for everything.
func Covers(list []string, match func(string) bool) bool {
	for _, x := range list {
		if x == "" || match(x) {
			return true
		}
	}
	return false
}

// Forbidden reports whether what may be listened on does not hold where a
// listener would listen; the name localhost is taken for loopback.
func Forbidden(net []string, out fact.Outcome) bool {
	host := map[string]string{"any": "0.0.0.0", "loopback": "127.0.0.1"}[out.Interface]
	port := fmt.Sprint(out.Port)
	return !Covers(net, func(x string) bool {
		return out.Outcome != "listens" || host == "" || x == host || x == host+":"+port || x == "localhost" && host == "127.0.0.1" || x == ":"+port || x == "localhost:"+port && host == "127.0.0.1" || strings.HasPrefix(x, "[::]")
	})
}

// confine says what Deno does not grant a program: what it reads fails then, and
// it cannot listen elsewhere.
func (s *Starter) confine(st *fact.Start) {
	if st.Final.Program != "deno" || s.C.Granted {
		return
	}
	allow, all, _ := Granted(st)
	if all {
		return
	}
	verb := ""
	if free := st.Final.Free(); len(free) > 0 {
		verb = free[0].Text
	}
	if verb != "run" && verb != "serve" {
		return
	}
	st.Program.Denied = func(kind, what string) bool {
		return !Covers(allow[kind], func(x string) bool {
			if kind == "env" {
				ok, _ := path.Match(x, what)
				return ok
			}
			return true
		})
	}
	if verb == "run" && len(allow["net"]) > 0 {
		for _, l := range st.Listeners {
			l.Net = func(out fact.Outcome) bool { return Forbidden(allow["net"], out) }
		}
	}
}
