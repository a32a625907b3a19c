package start

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

// dev gives why a start is a development server, and where that is written.
func dev(s *fact.Start) (why string, at place.Span, l *fact.Listener) {
	for _, x := range s.Listeners {
		if !x.Dev {
			continue
		}
		held := true
		for _, g := range x.Guards {
			if yes, ok := g.Under(value.Environ{Open: true}).Truth(false); ok && !yes {
				held = false
			}
		}
		if held {
			l = x
		}
	}
	k := s.Final.Known
	if k != nil && k.Dev != "" && (l != nil || k.Server == "") {
		if verb := first(s); verb != "" && strings.Contains(k.DevNot, " "+verb+" ") {
			return "", at, nil
		}
		return "the start command runs " + s.Final.Program + ", " + k.Dev, s.Final.At, l
	}
	if k != nil && first(s) != "" && strings.Contains(k.DevIn, " "+first(s)+" ") {
		return "the start command runs " + k.Name + " " + first(s) + ", a development server", s.Final.At, nil
	}
	if l == nil {
		return "", at, nil
	}
	switch l.Server {
	case "runserver":
		return "the start command runs manage.py runserver, the development server of Django", l.At, l
	case "next", "fastapi dev":
		return "the start command runs " + s.Final.Program + " in its development mode", s.Final.At, l
	case "flask":
		// The file is started as a program and serves by itself.
		return fmt.Sprintf("the start command runs %s, which serves with app.run(), the development server of the framework", path.Base(s.Target.File)), s.Final.At, l
	}
	if s.Final.Program == "php" {
		return "the start command runs the web server of PHP itself, which is made for development", s.Final.At, l
	}
	return "the start command runs a development server", s.Final.At, l
}

func first(s *fact.Start) string {
	if f := s.Final.Free(); len(f) > 0 {
		return f[0].Text
	}
	return ""
}

var devServer = &rules.Rule{
	ID: "start/dev-server", Level: rules.Risk, Title: "a development server is started", Doc: doc("dev-server"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			why, at, l := dev(on.Start)
			if why == "" {
				continue
			}
			level := rules.Risk
			f := rules.Finding{Where: at, Message: why}
			if l != nil {
				out := l.Under(on.Ported)
				if out.Outcome == "listens" && (out.Interface == "loopback" && on.Host.Reach == "any" || on.Port > 0 && out.Port != on.Port) {
					level = rules.Blocker
					on := "loopback only"
					if out.Interface != "loopback" {
						on = "any interface"
					}
					f.Message += fmt.Sprintf("; it listens on %s, port %d, where the host does not reach it", on, out.Port)
				}
				if l.At.File != at.File || l.At.Line != at.Line {
					f.Trail = append(f.Trail, rules.Step(l.At, "listens here"))
				}
			}
			f.Trail = append(append([]value.Step(nil), on.Start.Final.Steps...), f.Trail...)
			f.Remedy = production(p.Component, on)
			p.Report(on, level, f)
		}
	},
}

// production is a start command for production, with the names of this tree.
func production(c *fact.Component, on *rules.On) string {
	bind := "0.0.0.0:$PORT"
	if on.Host.Port.How != "injected" {
		bind = "0.0.0.0:8000"
	}
	s := on.Code
	if c.Runtime == "node" {
		if s.Final.Known != nil && s.Final.Known.Name == "next" {
			return "next start, after next build"
		}
		return "build the application, and serve what the build makes"
	}
	switch c.Runtime {
	case "php":
		return "php-fpm behind a web server (nginx, Apache httpd) that serves the public folder"
	case "ruby":
		return "bundle exec puma -b tcp://" + bind
	case "python", "":
	default:
		return "what the build for production makes"
	}
	if slices.Contains(c.Frameworks, "Django") {
		app := "PROJECT"
		if s.Config != nil {
			dir := path.Dir(strings.TrimPrefix(s.Config.Name, c.Dir+"/"))
			for strings.HasSuffix(dir, "settings") {
				dir = path.Dir(dir)
			}
			if dir != "." {
				app = strings.ReplaceAll(dir, "/", ".")
			}
		}
		return fmt.Sprintf("gunicorn %s.wsgi --bind %s", app, bind)
	}
	module := "app"
	if s.Target != nil && s.Target.File != "" {
		module = strings.ReplaceAll(strings.TrimSuffix(strings.TrimPrefix(s.Target.File, c.Dir+"/"), ".py"), "/", ".")
	}
	name := "app"
	if s.Program != nil && s.Target != nil {
		name = applicationName(s)
	}
	if slices.Contains(c.Frameworks, "FastAPI") || slices.Contains(c.Frameworks, "Starlette") {
		return fmt.Sprintf("uvicorn %s:%s --host 0.0.0.0 --port %s", module, name, strings.TrimPrefix(bind, "0.0.0.0:"))
	}
	return fmt.Sprintf("gunicorn %s:%s --bind %s", module, name, bind)
}

// applicationName finds the name that an application object has in the file
// that is started.
func applicationName(s *fact.Start) string {
	if f := s.Program.Loader.File(s.Target.File); f != nil {
		var names []string
		for n := range f.Top.Names {
			names = append(names, n)
		}
		slices.Sort(names)
		for _, n := range names {
			if v := s.Program.Name(f, n); v != nil && v.Kind == value.External && applications[v.Text] {
				return n
			}
		}
	}
	return "app"
}
