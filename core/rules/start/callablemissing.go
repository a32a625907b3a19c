package start

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

var callableMissing = &rules.Rule{
	ID: "start/callable-missing", Level: rules.Blocker, Title: "the module does not define the object to start", Doc: doc("callable-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Target == nil {
				continue
			}
			s, t := on.Start, on.Start.Target
			if t.Kind != command.CallableTarget || t.File == "" || t.Callable == "" || s.Final.Known != nil && s.Final.Known.Name == "flask" {
				continue
			}
			f := s.Program.Loader.File(t.File)
			if f == nil {
				continue
			}
			if makes(s, f) {
				p.Report(on, 0, rules.Finding{Where: t.At, Trail: s.Final.Steps, Message: fmt.Sprintf("%s in %s takes nothing, and %s calls it with each request as if it were the application; it makes the application", t.Callable, t.File, s.Final.Program), Remedy: fmt.Sprintf("'%s:%s()'", t.Module, t.Callable)})
				continue
			}
			alone := onlyAsMain(f, t.Callable)
			if !alone && defines(s, f, t.Callable) {
				continue
			}
			at := t.At
			msg := fmt.Sprintf("%s does not define %s", t.File, t.Callable)
			if alone {
				msg = fmt.Sprintf("%s defines %s only where it is run as the program itself, not where %s imports it", t.File, t.Callable, s.Final.Program)
			}
			if !strings.Contains(t.Named, ":") {
				msg = fmt.Sprintf("%s gives no name, so %s looks for %s, and %s does not define it", t.Named, s.Final.Program, t.Callable, t.File)
			}
			remedy := "NAME in " + t.Module + ":NAME"
			if alone {
				remedy = fmt.Sprintf("%s = … in %s, before the test of __name__", t.Callable, t.File)
			} else if n := object(s, f); n != "" {
				remedy = t.Module + ":" + n
				msg += fmt.Sprintf("; it does define %s", strings.TrimSuffix(n, "()"))
			}
			p.Report(on, 0, rules.Finding{Where: at, Trail: s.Final.Steps, Message: msg, Remedy: remedy})
		}
	},
}

// calling are the servers that call the object as it stands (documentation of gunicorn 23,
// "WSGI Application", and waitress 3, "waitress-serve", --call).
var calling = map[string]bool{"gunicorn": true, "waitress-serve": true}

// makes reports whether the object is a function of the module that takes nothing: a
// factory, and no application.
func makes(s *fact.Start, f *code.File) bool {
	t := s.Target
	list := f.Top.Names[t.Callable]
	if s.Final.Known == nil || !calling[s.Final.Known.Name] || t.Factory || f.Lang != code.Python || len(list) != 1 || list[0].Kind != "func" || list[0].Func == nil || len(list[0].Guards) > 0 {
		return false
	}
	if w, set, _ := s.Final.Flag("-k", "--worker-class"); set && !(w.Literal() && (w.Text == "sync" || w.Text == "gthread" || w.Text == "gevent")) { // workers for ASGI know factories
		return false
	}
	if f := s.Program.Loader.File(s.Server); s.Server != "" && (f == nil || len(f.Top.Names["worker_class"]) > 0) { // its settings say which workers
		return false
	}
	fn := list[0].Func
	return fn.Flag&code.Async == 0 && len(fn.Kids) == 2 && fn.Kids[0].Is(code.Params) && len(fn.Kids[0].Kids) == 0 // and nothing decorates it
}

// onlyAsMain reports whether all that makes a name in a file of Python stands under
// the test of __name__, which does not hold where the file is imported.
func onlyAsMain(f *code.File, name string) bool {
	list := f.Top.Names[name]
	if f.Lang != code.Python || len(list) == 0 || len(f.Stars) > 0 {
		return false
	}
	for _, b := range list {
		if !slices.ContainsFunc(b.Guards, func(g code.Guard) bool { return asMain(g) }) {
			return false
		}
	}
	for _, way := range []string{"globals()", "__getattr__", "sys.modules", "exec(", "global " + name} { // it may be set by name
		if strings.Contains(string(f.Src), way) {
			return false
		}
	}
	return true
}

// asMain reports whether a condition is the test of __name__, where it holds.
func asMain(g code.Guard) bool {
	c := g.Test
	return c.Is(code.Binary) && c.Name == "==" && !g.Not && (c.Kid(0).Is(code.Name) && c.Kids[0].Name == "__name__" && c.Kid(1).Is(code.String) && c.Kids[1].Name == "__main__" ||
		c.Kid(1).Is(code.Name) && c.Kids[1].Name == "__name__" && c.Kid(0).Is(code.String) && c.Kids[0].Name == "__main__")
}

// defines reports whether a module has the object, also by attributes
// (application.app) and by names made in ways that are not followed.
func defines(s *fact.Start, f *code.File, callable string) bool {
	name, _, _ := strings.Cut(callable, ".")
	if len(f.Top.Names[name]) > 0 {
		return true
	}
	if s.Program.Name(f, name) != nil {
		return true
	}
	for _, star := range f.Stars { // from a package that is not read
		if _, ok := s.Program.Loader.Resolve(f, star.Name, ""); !ok {
			return true
		}
	}
	src := string(f.Src)
	if strings.Contains(src, "globals()") || strings.Contains(src, "__getattr__") || strings.Contains(src, "setattr(") {
		return true
	}
	// A submodule can be an attribute of its package.
	if strings.HasSuffix(f.Name, "/__init__.py") {
		if _, ok := s.Program.Loader.Resolve(f, "."+name, ""); ok {
			return strings.Contains(callable, ".")
		}
	}
	return false
}

// applications are what frameworks' constructors give.
var applications = map[string]bool{"flask.Flask()": true, "fastapi.FastAPI()": true, "starlette.applications.Starlette()": true, "quart.Quart()": true, "django.core.wsgi.get_wsgi_application()": true, "django.core.asgi.get_asgi_application()": true,

	"aiohttp.web.Application()": true, "bottle.Bottle()": true, "falcon.App()": true, "sanic.Sanic()": true, "litestar.Litestar()": true, "falcon.asgi.App()": true, "connexion.FlaskApp()": true}

// object finds the application object, or the factory, that a module has.
func object(s *fact.Start, f *code.File) string {
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
	for _, n := range names {
		if strings.HasPrefix(n, "create_app") || strings.HasPrefix(n, "make_app") || strings.HasPrefix(n, "get_app") || n == "application" || n == "app" {
			if b := f.Top.Names[n]; b[0].Kind == "func" && (n != "application" && n != "app") {
				return n + "()"
			}
			return n
		}
	}
	return ""
}
