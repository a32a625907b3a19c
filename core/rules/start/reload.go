package start

import (
	"fmt"

	"ubique/core/code"
	"ubique/core/place"
	"ubique/core/rules"
)

var reload = &rules.Rule{
	ID: "start/reload", Level: rules.Risk, Title: "the program watches files, reloads or opens a debugger", Doc: doc("reload"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			f := on.Start.Final
			if f.Manager == "nodemon" || f.Manager == "ts-node-dev" {
				at := f.At
				for _, w := range f.Wrapped {
					if w.Name == f.Manager {
						at = w.At
					}
				}
				p.Report(on, 0, rules.Finding{Where: at, Trail: f.Steps, Message: f.Manager + " restarts the program when a file changes: for work on it, not for a host", Remedy: "node " + on.Start.Named()})
				continue
			}
			if f.Known != nil && f.Known.Watch != "" && f.Manager == "" {
				p.Report(on, 0, rules.Finding{Where: f.At, Trail: f.Steps, Message: f.Program + " " + f.Known.Watch + ": for work on it, not for a host", Remedy: "the command that " + f.Program + " restarts"})
				continue
			}
			if f.Watching != nil {
				if f.Known != nil && f.Known.Dev != "" && f.Known.Name == "flask" {
					continue // start/dev-server says it all
				}
				p.Report(on, 0, rules.Finding{Where: f.Watching.At, Trail: f.Steps, Message: fmt.Sprintf("%s makes %s watch, reload or open a debugger: for work on it, not for a host", f.Watching.Text, f.Program), Remedy: "the command without " + f.Watching.Text})
				continue
			}
			if at, ok := inSettings(on); ok {
				p.Report(on, 0, rules.Finding{Where: at, Trail: f.Steps, Message: "reload makes gunicorn watch the files and restart: for work on it, not for a host", Remedy: "reload = False"})
				continue
			}
			for _, l := range reloads(on) {
				p.Report(on, 0, l)
			}
		}
	},
}

// inSettings finds reload = True in the settings of gunicorn.
func inSettings(on *rules.On) (at place.Span, ok bool) {
	s := on.Start
	if s.Final.Known == nil || s.Final.Known.Name != "gunicorn" || s.Program == nil || s.Server == "" {
		return at, false
	}
	f := s.Program.Loader.File(s.Server)
	if f == nil || len(f.Top.Names["reload"]) == 0 {
		return at, false
	}
	v := s.Program.Name(f, "reload")
	if v == nil {
		return at, false
	}
	if yes, known := v.Under(on.Ported).Truth(true); !known || !yes {
		return at, false
	}
	b := f.Top.Names["reload"][0]
	return f.Lines.Span(f.Name, int(b.Off), int(b.Off)+len("reload")), true
}

// reloads finds uvicorn.run(reload=True) in the code that is started.
func reloads(on *rules.On) []rules.Finding {
	var list []rules.Finding
	s := on.Start
	for _, l := range s.Listeners {
		if l.Via != "code" || l.Server != "uvicorn.run" {
			continue
		}
		f := s.Program.Loader.File(l.At.File)
		if f == nil || l.Under(on.Ported).Outcome == "skipped" {
			continue
		}
		for _, site := range f.Calls {
			if f.At(site.Node) != l.At {
				continue
			}
			for _, a := range site.Node.Args() {
				if !a.Is(code.Keyword) || a.Name != "reload" {
					continue
				}
				if yes, ok := s.Program.Expr(a.Kid(0), site.Scope).Under(on.Ported).Truth(true); ok && yes {
					list = append(list, rules.Finding{Where: f.At(a), Message: "reload makes uvicorn watch the files and restart: for work on it, not for a host", Remedy: "reload=False"})
				}
			}
		}
	}
	return list
}
