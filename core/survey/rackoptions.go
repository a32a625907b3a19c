package survey

import (
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
	"ubique/core/version"
)

// rackOptions reads the options in a line of config.ru that begins with #\, which rackup
// takes up to rack 2 where the command line does not give them, and which is a comment
// from rack 3 on (rack 2.2, lib/rack/builder.rb, load_file; rack 3.0, CHANGELOG).
func (s *Starter) rackOptions(st *fact.Start) {
	if len(st.Listeners) != 1 || st.Listeners[0].Server != "rackup" || st.Target == nil || st.Target.File == "" {
		return
	}
	f := st.Program.Loader.File(st.Target.File)
	if f == nil {
		return
	}
	off, words := -1, ""
	for at, line := 0, ""; at < len(f.Src); at += len(line) + 1 {
		line, _, _ = strings.Cut(string(f.Src[at:]), "\n")
		if rest, ok := strings.CutPrefix(line, `#\`); ok {
			off, words = at, rest
			break
		}
	}
	if off < 0 {
		return
	}
	l := st.Listeners[0]
	switch old, known := s.oldRack(); {
	case known && !old:
		return
	case !known:
		l.Doubt = "whether rack is older than 3, which takes the options in " + f.Name
		return
	}
	given := strings.Fields(words)
	for i, next := 0, off+len(`#\`); i < len(given); i++ {
		name, v, joined := strings.Cut(given[i], "=")
		if !strings.HasPrefix(name, "--") && len(name) > 2 && strings.HasPrefix(name, "-") {
			name, v, joined = name[:2], given[i][2:], true
		}
		if !joined && i+1 < len(given) && strings.Contains(" -p --port -o --host -E --env -s --server ", " "+name+" ") {
			i++
			v = given[i]
		}
		next += max(0, strings.Index(string(f.Src[next:]), v))
		at := f.Lines.Span(f.Name, next, next+len(v))
		rackOption(l, name, value.Text(v, at), at)
	}
}

// rackOption gives a listener of rackup what an option says, where it has not been given.
func rackOption(l *fact.Listener, name string, v *value.Value, at place.Span) {
	switch name {
	case "-p", "--port":
		if l.Port == nil {
			l.Port, l.PortAt, l.Via = v, at, "flag"
		}
	case "-o", "--host":
		if l.Host == nil {
			l.Host, l.HostAt = v, at
		}
	}
}

// oldRack reports whether rack is older than version 3, as far as the lock or the
// manifest tells.
func (s *Starter) oldRack() (old, known bool) {
	three, _ := version.Parse("3")
	for _, l := range s.C.Locks {
		for _, p := range l.Packages {
			if v, ok := version.Parse(p.Version); ok && p.Name == "rack" {
				return v.Compare(three) < 0, true
			}
		}
	}
	if d, ok := s.C.Dep("rack"); ok && d.Known && !d.Set.Empty() {
		before := d.Set.Intersect(version.Below(three))
		return !before.Empty(), before.Empty() || d.Set.Within(version.Below(three))
	}
	return false, false
}
