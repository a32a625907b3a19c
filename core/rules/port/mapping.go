package port

import (
	"fmt"
	"path"
	"strconv"
	"strings"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/value"
)

// mapping is a port of a container that a Compose file maps to one of the machine, and what
// the service sets in the environment (Compose Specification, "ports", "environment").
type mapping struct {
	service string
	port    int
	at      place.Span
	text    string
	set     map[string]string
}

// composed are the names that Compose looks for (Compose Specification, "Compose file").
var composed = []string{"compose.yaml", "compose.yml", "docker-compose.yaml", "docker-compose.yml"}

// mappings lists the mapped ports of the services that are built from the folder of a
// component and run what its image runs. A service whose ports or environment are made of
// what the file does not say is left out.
func mappings(t *source.Tree, dir string) (list []mapping) {
	for _, in := range []string{"", dir} {
		for _, name := range composed {
			file := path.Join(in, name)
			if !t.Has(file) {
				continue
			}
			f, err := t.Document(file)
			if err != nil {
				continue
			}
			docs, err := document.YAML(file, f.Data, f.Lines())
			if err != nil || len(docs) == 0 {
				continue
			}
			for _, s := range docs[0].Get("services").Items() {
				if !overridden(t, in) {
					list = append(list, mapped(s, in, dir)...)
				}
			}
		}
		if in == dir {
			break
		}
	}
	return list
}

// overridden reports whether a file beside it changes what a Compose file says (Compose
// Specification, "Merge").
func overridden(t *source.Tree, dir string) bool {
	for _, name := range composed {
		ext := path.Ext(name)
		if t.Has(path.Join(dir, strings.TrimSuffix(name, ext)+".override"+ext)) {
			return true
		}
	}
	return false
}

// debuggers are ports of debuggers, which nothing listens on but while one works: of Node.js,
// Java, Python, Delve and PHP (their manuals, 2026-11).
var debuggers = map[int]bool{9229: true, 5005: true, 8787: true, 5678: true, 2345: true, 40000: true, 9003: true, 9000: true}

// mapped lists those of one service.
func mapped(s *document.Node, in, dir string) (list []mapping) {
	build := s.Get("build")
	context := build.Str()
	if c := build.Get("context"); c != nil {
		context = c.Str()
	}
	if p, ok := source.Join(in, context); build == nil || context == "" || !ok || p != dir || build.Get("dockerfile") != nil || build.Get("target") != nil {
		return nil
	}
	for _, odd := range []string{"command", "entrypoint", "network_mode", "env_file", "extends"} {
		if s.Get(odd) != nil {
			return nil
		}
	}
	set := map[string]string{}
	for _, e := range s.Get("environment").Items() {
		v, known := e.Scalar()
		name := e.Key
		if name == "" {
			name, v, known = strings.Cut(v, "=")
		}
		if !known || v == "" || strings.Contains(v, "$") {
			return nil // the shell of whoever starts it says the rest
		}
		set[name] = v
	}
	for _, p := range s.Get("ports").Items() {
		whole, _ := p.Scalar()
		text := whole
		if n := p.Get("target"); n != nil {
			text, _ = n.Scalar()
		}
		text, _, _ = strings.Cut(text, "/")
		inner := text[strings.LastIndexByte(text, ':')+1:]
		n, err := strconv.Atoi(inner)
		if err != nil || strings.HasSuffix(whole, "/udp") || p.Get("protocol").Str() == "udp" {
			return nil // a range, or what a variable gives
		}
		if debuggers[n] {
			continue
		}
		list = append(list, mapping{s.Key, n, p.At(), whole, set})
	}
	return list
}

// mismapped reports services none of whose mapped ports is listened on in the container.
func mismapped(p *rules.Pass, on *rules.On) {
	if on.Start == nil || on.Start.Descriptor == nil || on.Start.Descriptor.Image == nil || fronted(on) {
		return
	}
	by := map[string][]mapping{}
	var order []string
	for _, m := range mappings(p.Tree, p.Component.Dir) {
		if by[m.service] == nil {
			order = append(order, m.service)
		}
		by[m.service] = append(by[m.service], m)
	}
	for _, service := range order {
		list := by[service]
		env := value.Environ{Set: map[string]string{}}
		if on.Env.Set != nil {
			env = on.Env
		}
		env = env.With(list[0].set)
		listens, met := 0, false
		var steps []value.Step
		for _, l := range on.Start.Listeners {
			out := l.Under(env)
			if l.Dev || out.Outcome == "unknown" || out.Interface == "loopback" || strings.HasPrefix(out.Interface, "unix:") {
				met = true // another rule speaks of it, or nothing can be said
				break
			}
			if out.Outcome != "listens" || out.Port <= 0 {
				continue
			}
			for _, m := range list {
				met = met || m.port == out.Port
			}
			if listens == 0 {
				if listens, steps = out.Port, trail(l, portValue(l)); steps == nil {
					steps = append(steps, rules.Step(l.At, "listens here"))
				}
			}
		}
		if met || listens == 0 {
			continue
		}
		m := list[0]
		outer, _, has := strings.Cut(m.text, ":")
		if i := strings.LastIndexByte(m.text, ':'); has {
			outer = m.text[:i]
		}
		remedy := fmt.Sprintf("%s:%d", outer, listens)
		if m.text == "" {
			remedy = fmt.Sprintf("target: %d", listens)
		}
		p.Report(on, 0, rules.Finding{
			Where:   m.at,
			Message: fmt.Sprintf("maps port %d of the container of %s, but %s listens on %d there", m.port, m.service, program(on), listens),
			Remedy:  remedy,
			Trail:   steps,
		})
	}
}
