package port

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/value"
)

var loopback = &rules.Rule{
	ID: "port/loopback", Level: rules.Blocker, Title: "reachable from the machine itself only", Doc: doc("loopback"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			v := judge(on)
			if !v.loopback {
				continue
			}
			l := v.listener
			f := rules.Finding{Where: l.HostAt}
			socket, unix := strings.CutPrefix(v.outcome.Interface, "unix:")
			switch {
			case unix && shared(p, on, socket):
				continue
			case unix:
				f.Where = l.At
				if l.PortAt.Line > 0 {
					f.Where = l.PortAt
				}
				f.Message = fmt.Sprintf("listens on the socket file %s and on no port; this host reaches the component from another machine", path.Base(socket))
			case l.Host == nil && l.Bind == nil:
				f.Where = l.At
				what := program(on)
				if l.Via == "code" {
					what = l.Server
				}
				f.Message = fmt.Sprintf("no host is given, and %s then listens on loopback only; this host reaches the component from another machine", what)
			default:
				f.Message = "listens on loopback only; this host reaches the component from another machine"
				if l.Host != nil {
					if made := l.Host.Made(on.Ported); made.Kind == value.Str && made.At.Line > 0 {
						f.Where = made.At // where the address is written
					}
					f.Trail = trail(l, l.Host)
				} else {
					f.Trail = trail(l, l.Bind)
				}
			}
			switch {
			case l.Via == "code" || l.Via == "setting":
				f.Remedy = anyAddress(l)
			case l.Server == "rackup":
				f.Remedy = "-o 0.0.0.0"
			case l.Server == "php -S":
				f.Remedy = "php -S 0.0.0.0:" + portText(on, v)
			case l.Server == "puma":
				f.Remedy = "-b tcp://0.0.0.0:" + portText(on, v)
			case l.Server == "gunicorn" || l.Server == "hypercorn":
				f.Remedy = fmt.Sprintf("--bind 0.0.0.0:%s", portText(on, v))
			default:
				f.Remedy = "--host 0.0.0.0"
			}
			p.Report(on, 0, f)
		}
	},
}

func portText(on *rules.On, v verdict) string {
	if on.Host.Port.How == "injected" {
		return "$" + on.Host.Port.Variable
	}
	if v.outcome.Port > 0 {
		return fmt.Sprint(v.outcome.Port)
	}
	if d := on.Code.Descriptor; d != nil && d.Image != nil && len(d.Image.Expose) > 0 {
		return fmt.Sprint(d.Image.Expose[0].Port)
	}
	return "8080"
}

// shared reports whether a socket file of an image lies in a folder that a YAML file of
// the tree mounts, so that a server in another container may reach it: the part of a
// volume behind its colon, or a path of its own (Compose Specification, "volumes";
// Kubernetes 1.34, VolumeMount).
func shared(p *rules.Pass, on *rules.On, socket string) (found bool) {
	dir := path.Dir(socket) + "/"
	if d := on.Code.Descriptor; d == nil || d.Image == nil || !path.IsAbs(socket) {
		return false
	}
	for _, e := range p.Tree.Below("") {
		if end := path.Ext(e.Path); end != ".yaml" && end != ".yml" {
			continue
		}
		for _, d := range survey.Documents(p.Tree, e.Path) {
			d.Walk(func(_ []string, n *document.Node) {
				text, _ := n.Scalar()
				for part := range strings.SplitSeq(text, ":") {
					found = found || len(part) > 1 && path.IsAbs(part) && strings.HasPrefix(dir, path.Clean(part)+"/")
				}
			})
		}
	}
	return found
}
