package survey

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/value"
)

// Routes of the common routers: which paths are answered, by which methods.
// Sources: Express 5, Fastify 5, Koa Router 14, Hono 4, Nest 11; Flask 3,
// FastAPI 0.12x, Django 5, aiohttp 3, Tornado 6, Bottle 0.13; Sinatra 4, Rails
// 8; net/http, chi 5, gin 1, echo 4, fiber 2, gorilla/mux 1; Spring MVC 6,
// Jakarta REST 4, Javalin 6, Ktor 3, HttpServer; Slim 4, Laravel 12; ASP.NET
// Core 10; Axum 0.8, Actix 4, Rocket 0.5; Plug 1, Phoenix 1.8; Bun 1; read
// 2026-11.

// routeMethods are the names of methods and macros that answer a path.
var routeMethods = map[string]string{
	"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "head": "HEAD", "options": "OPTIONS", "del": "DELETE",
	"GET": "GET", "POST": "POST", "PUT": "PUT", "PATCH": "PATCH", "DELETE": "DELETE", "HEAD": "HEAD",
	"Get": "GET", "Post": "POST", "Put": "PUT", "Patch": "PATCH", "Delete": "DELETE", "Head": "HEAD",
	"MapGet": "GET", "MapPost": "POST", "MapPut": "PUT", "MapDelete": "DELETE", "MapPatch": "PATCH", "MapFallback": "any", "MapHealthChecks": "GET",
	"add_get": "GET", "add_post": "POST", "add_put": "PUT", "add_delete": "DELETE",
	"all": "any", "any": "any", "Any": "any", "All": "any", "HandleFunc": "any", "Handle": "any", "createContext": "any", "match": "any", "map": "any", "forward": "any",
}

// decorators that answer a path, by their last name.
var routeMarks = map[string]string{
	"route": "GET", "get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "head": "HEAD", "api_route": "GET", "websocket": "",
	"Get": "GET", "Post": "POST", "Put": "PUT", "Patch": "PATCH", "Delete": "DELETE", "All": "any", "Head": "HEAD",
	"GetMapping": "GET", "PostMapping": "POST", "PutMapping": "PUT", "PatchMapping": "PATCH", "DeleteMapping": "DELETE", "RequestMapping": "any",
	"GET": "GET", "POST": "POST", "PUT": "PUT", "DELETE": "DELETE",
	"HttpGet": "GET", "HttpPost": "POST", "HttpPut": "PUT", "HttpDelete": "DELETE", "HttpPatch": "PATCH",
}

// prefixMarks are annotations that give a class or a method its path.
var prefixMarks = map[string]bool{"Controller": true, "RequestMapping": true, "Path": true, "Route": true, "JsonController": true, "RestController": true}

type router struct {
	e    *value.Eval
	list []fact.Route
	seen map[string]bool
}

// Routes lists what the code of a start answers.
func Routes(st *fact.Start) []fact.Route {
	if st.Program == nil {
		return nil
	}
	r := &router{e: st.Program, seen: map[string]bool{}}
	files := r.files(st)
	prefixes := r.mounts(files)
	for _, f := range files {
		for _, p := range under(prefixes, f.Name) {
			r.calls(f, p, prefixes)
			r.marks(f, p)
		}
	}
	if st.Config != nil {
		if v := st.Program.Expr(&code.Node{Kind: code.Name, Name: "ROOT_URLCONF"}, st.Config.Top); v.Kind == value.Str {
			r.django(v.Text, "/", st.Config, 0)
		}
	}
	r.handlers(files)
	slices.SortStableFunc(r.list, func(a, b fact.Route) int {
		if c := strings.Compare(a.Path, b.Path); c != 0 {
			return c
		}
		return strings.Compare(a.Method, b.Method)
	})
	return r.list
}

// files are the sources of a start, with those that a framework reads by their
// place: config/routes.rb, routes/web.php.
func (r *router) files(st *fact.Start) []*code.File {
	var list []*code.File
	add := func(name string) {
		if f := r.e.Loader.File(name); f != nil && f.Body != nil && !slices.Contains(list, f) {
			list = append(list, f)
		}
	}
	for i, name := range st.Reached {
		if i < 400 {
			add(name)
		}
	}
	for _, name := range []string{"config/routes.rb", "routes/web.php", "routes/api.php", "config/routes.php", "app/routes.php"} {
		add(Join(st.Final.Dir, name))
	}
	return list
}

func (r *router) add(method, p string, f *code.File, n *code.Node) {
	if method == "" || len(r.list) > 500 {
		return
	}
	p = clean(p)
	key := method + " " + p
	if r.seen[key] {
		return
	}
	r.seen[key] = true
	r.list = append(r.list, fact.Route{Method: method, Path: p, At: f.At(n)})
}

// clean makes one path of parts put together.
func clean(p string) string {
	if p == "*" {
		return p
	}
	p = "/" + strings.Trim(p, "/")
	for strings.Contains(p, "//") {
		p = strings.ReplaceAll(p, "//", "/")
	}
	return p
}

// under lists the prefixes of a file: none is one of its own.
func under(prefixes map[string][]string, file string) []string {
	if p := prefixes[file]; len(p) > 0 {
		return p
	}
	return []string{""}
}

// routeText is the text of an argument; ok is false for what is none.
func routeText(e *value.Eval, n *code.Node, s *code.Scope) (string, bool) {
	if n == nil {
		return "", false
	}
	if n.Is(code.String) {
		return n.Name, true
	}
	if n.Is(code.Name) || n.Is(code.Template) || n.Is(code.Binary) || n.Is(code.Member) {
		if v := e.Expr(n, s); v.Kind == value.Str {
			return v.Text, true
		}
	}
	return "", false
}

// keyword is an argument by its name.
func keyword(n *code.Node, name string) *code.Node {
	for _, a := range n.Args() {
		if a.Is(code.Keyword) && a.Name == name {
			return a.Kid(0)
		}
	}
	return nil
}

// mounts finds under which paths files of routes are hung: app.use("/api",
// require("./api")), include_router(api.router, prefix="/api"),
// register_blueprint(bp, url_prefix="/api").
func (r *router) mounts(files []*code.File) map[string][]string {
	m := map[string][]string{}
	for _, f := range files {
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !callee.Is(code.Member) {
				continue
			}
			prefix, target := "", (*code.Node)(nil)
			switch callee.Name {
			case "use", "route", "register":
				p, ok := routeText(r.e, site.Node.Kid(1), site.Scope)
				if callee.Name == "register" {
					target = site.Node.Kid(1)
					if o := site.Node.Kid(2); o.Is(code.Object) {
						for _, k := range o.Kids {
							if k.Is(code.Pair) && k.Name == "prefix" && k.Kid(0).Is(code.String) {
								p, ok = k.Kids[0].Name, true
							}
						}
					}
				} else {
					target = site.Node.Kid(2)
				}
				if !ok || !strings.HasPrefix(p, "/") || target == nil {
					continue
				}
				prefix = p
			case "include_router":
				p, ok := routeText(r.e, keyword(site.Node, "prefix"), site.Scope)
				if !ok {
					continue
				}
				prefix, target = p, site.Node.Kid(1)
			case "register_blueprint":
				p, ok := routeText(r.e, keyword(site.Node, "url_prefix"), site.Scope)
				if !ok {
					continue
				}
				prefix, target = p, site.Node.Kid(1)
			default:
				continue
			}
			if to := r.fileOf(target, f, site.Scope); to != "" && to != f.Name && len(m[to]) < 8 {
				m[to] = append(m[to], prefix)
			}
		}
	}
	return m
}

// fileOf is the file that a router comes from.
func (r *router) fileOf(n *code.Node, f *code.File, s *code.Scope) string {
	for n.Is(code.Call) && !(n.Kid(0).Is(code.Name) && n.Kids[0].Name == "require") {
		n = n.Kid(0)
	}
	if n.Is(code.Call) && n.Kid(1).Is(code.String) {
		to, _ := r.e.Loader.Resolve(f, n.Kids[1].Name, "")
		return to
	}
	for n.Is(code.Member) {
		n = n.Kid(0)
	}
	if !n.Is(code.Name) {
		return ""
	}
	for x := s; x != nil; x = x.Parent {
		for _, b := range x.Names[n.Name] {
			switch {
			case b.Import != nil:
				name := ""
				if b.Name2 != nil {
					name = b.Name2.Name
				}
				if f.Lang == code.Python { // a module of a package comes first
					if to, ok := r.e.Loader.Resolve(f, b.Import.Name+"."+name, ""); ok {
						return to
					}
				}
				if to, ok := r.e.Loader.Resolve(f, b.Import.Name, name); ok {
					return to
				}
			case b.Value.Is(code.Call) && b.Value.Kid(0).Is(code.Name) && b.Value.Kids[0].Name == "require" && b.Value.Kid(1).Is(code.String):
				to, _ := r.e.Loader.Resolve(f, b.Value.Kids[1].Name, "")
				return to
			}
		}
	}
	return ""
}

// calls finds routes that calls define.
func (r *router) calls(f *code.File, prefix string, mounted map[string][]string) {
	local := map[string]string{} // routers of the file by their name, with their prefix
	for _, site := range f.Calls {
		callee := site.Node.Kid(0)
		switch { // Blueprint("x", __name__, url_prefix="/x"), APIRouter(prefix="/x")
		case callee.Is(code.Name) && (callee.Name == "Blueprint" || callee.Name == "APIRouter"):
			for _, k := range []string{"url_prefix", "prefix"} {
				if p, ok := routeText(r.e, keyword(site.Node, k), site.Scope); ok {
					local[bindingOf(f, site.Node)] = p
				}
			}
		case callee.Is(code.Member) && (callee.Name == "use" || callee.Name == "include_router" || callee.Name == "register_blueprint"):
			for _, a := range site.Node.Args() { // a router of this file
				p, ok := routeText(r.e, site.Node.Kid(1), site.Scope)
				if callee.Name != "use" {
					if p, ok = routeText(r.e, keyword(site.Node, "prefix"), site.Scope); !ok {
						p, ok = routeText(r.e, keyword(site.Node, "url_prefix"), site.Scope)
					}
				}
				if a.Is(code.Name) && ok && len(f.Top.Names[a.Name]) > 0 && f.Top.Names[a.Name][0].Import == nil {
					local[a.Name] = p + local[a.Name]
				}
			}
		}
	}
	for _, site := range f.Calls {
		n := site.Node
		callee := n.Kid(0)
		if !callee.Is(code.Member) && !(callee.Is(code.Name) && (f.Lang == code.Ruby || f.Lang == code.Elixir || f.Lang == code.Kotlin)) {
			continue
		}
		method, ok := routeMethods[callee.Name]
		base := callee.Kid(0)
		hung := prefix
		if base.Is(code.Name) {
			hung += local[base.Name]
		}
		switch {
		case callee.Name == "root" && f.Lang == code.Ruby && strings.HasSuffix(f.Name, "routes.rb"):
			r.add("GET", "/", f, n)
			continue
		case callee.Name == "route" && callee.Is(code.Member):
			r.routed(f, site, hung)
			continue
		case f.Lang == code.Elixir && (callee.Name == "get" || callee.Name == "post" || callee.Name == "put" || callee.Name == "delete" || callee.Name == "match"):
			hung += scopes(f, n)
		case f.Lang == code.Ruby && callee.Is(code.Name) && ok && (n.Kid(1).Is(code.String) || n.Kid(1).Is(code.Keyword)):
			p := n.Kids[1].Name // get "up" => "rails/health#show" too
			if strings.HasSuffix(f.Name, "routes.rb") || strings.HasPrefix(p, "/") {
				r.add(method, hung+clean(p), f, n)
			}
			continue
		case f.Lang == code.PHP && base.Is(code.Name) && base.Name == "Route":
			if strings.HasSuffix(f.Name, "routes/api.php") {
				hung += "/api"
			}
			if p, is := routeText(r.e, n.Kid(1), site.Scope); is && ok {
				r.add(method, hung+"/"+strings.TrimPrefix(p, "/"), f, n)
			}
			continue
		}
		if !ok || len(n.Kids) < 2 {
			continue
		}
		p, is := routeText(r.e, n.Kid(1), site.Scope)
		if !is || len(n.Kids) < 3 && callee.Name != "get" && !n.Kid(len(n.Kids)-1).Is(code.Func) && f.Lang != code.Kotlin {
			continue
		}
		if f.Lang == code.Go { // "GET /path" since Go 1.22
			if verb, rest, cut := strings.Cut(p, " "); cut && strings.ToUpper(verb) == verb && method == "any" {
				method, p = verb, strings.TrimSpace(rest)
			}
			p = strings.TrimSuffix(p, "{$}")
		}
		if !strings.HasPrefix(p, "/") && p != "" && p != "*" || len(n.Kids) < 3 {
			continue // app.get("port") is a setting, cache.get("x") no route
		}
		r.add(method, hung+p, f, n)
	}
}

// routed reads app.route("/", get(h)) of Axum and Actix, fastify.route({…}) and
// app.route("/x").get(h) of Express.
func (r *router) routed(f *code.File, site code.Site, prefix string) {
	n := site.Node
	p, ok := routeText(r.e, n.Kid(1), site.Scope)
	switch {
	case ok && f.Lang == code.Rust && n.Kid(2) != nil:
		found := false
		n.Kids[2].Walk(func(k *code.Node) bool {
			if k.Is(code.Call) {
				last := k.Kid(0).Dotted()
				if k.Kid(0).Is(code.Member) {
					last = k.Kids[0].Name
				}
				last = value.Tail(last, 1)
				if m := routeMethods[last]; m != "" && strings.ToLower(last) == last {
					r.add(m, prefix+p, f, n)
					found = true
				}
			}
			return !k.Is(code.Func)
		})
		if !found {
			r.add("any", prefix+p, f, n)
		}
	case n.Kid(1).Is(code.Object):
		method, url := "", ""
		for _, k := range n.Kids[1].Kids {
			if k.Is(code.Pair) && k.Kid(0).Is(code.String) {
				switch k.Name {
				case "method":
					method = strings.ToUpper(k.Kids[0].Name)
				case "url", "path":
					url = k.Kids[0].Name
				}
			}
		}
		if url != "" {
			r.add(method, prefix+url, f, n)
		}
	case ok && f.Lang != code.Python && strings.HasPrefix(p, "/"):
		for _, s := range f.Calls {
			c := s.Node.Kid(0)
			if c.Is(code.Member) && routeMethods[c.Name] != "" {
				for b := c.Kid(0); b.Is(code.Call); b = b.Kid(0).Kid(0) {
					if b == n {
						r.add(routeMethods[c.Name], prefix+p, f, s.Node)
					}
				}
			}
		}
	}
}

// scopes are the scopes of Phoenix around a route.
func scopes(f *code.File, n *code.Node) string {
	p := ""
	for _, site := range f.Calls {
		c := site.Node.Kid(0)
		if c.Is(code.Name) && c.Name == "scope" && site.Node.Off < n.Off && site.Node.End >= n.End && site.Node.Kid(1).Is(code.String) {
			p += "/" + strings.Trim(site.Node.Kids[1].Name, "/")
		}
	}
	return p
}

// bindingOf is the name that a value is given at the top of a file.
func bindingOf(f *code.File, n *code.Node) string {
	for name, bs := range f.Top.Names {
		for _, b := range bs {
			if b.Value == n {
				return name
			}
		}
	}
	return ""
}

// marks finds routes that decorators, annotations and attributes define.
func (r *router) marks(f *code.File, prefix string) {
	local := map[string]string{}
	for name, bs := range f.Top.Names {
		for _, b := range bs {
			if c := b.Value; c.Is(code.Call) && c.Kid(0).Is(code.Name) && (c.Kids[0].Name == "Blueprint" || c.Kids[0].Name == "APIRouter") {
				for _, k := range []string{"url_prefix", "prefix"} {
					if p, ok := routeText(r.e, keyword(c, k), f.Top); ok {
						local[name] = p
					}
				}
			}
		}
	}
	var visit func(n *code.Node, class string)
	visit = func(n *code.Node, class string) {
		switch {
		case n == nil:
			return
		case n.Is(code.Class):
			own := class
			for _, d := range n.Kids[min(2, len(n.Kids)):] {
				if name, p, ok := mark(d); prefixMarks[name] && (ok || name == "Controller") {
					own = class + "/" + strings.Trim(p, "/")
				}
			}
			visit(n.Kid(1), own)
			return
		case n.Is(code.Func):
			method, p, at := "", "", n
			hung := prefix + class
			for _, d := range n.Kids[min(2, len(n.Kids)):] {
				name, text, ok := mark(d)
				if m, is := routeMarks[name]; is && (d.Kid(0).Is(code.Member) || f.Lang != code.Python) {
					method, at = m, d
					if ok {
						p = text
					}
					if d.Kid(0).Is(code.Member) && d.Kids[0].Kid(0).Is(code.Name) {
						hung = prefix + local[d.Kids[0].Kids[0].Name] + class
					}
					if list := keyword(d, "methods"); list.Is(code.Array) {
						for _, k := range list.Kids {
							if k.Is(code.String) {
								r.add(strings.ToUpper(k.Name), hung+"/"+strings.TrimPrefix(p, "/"), f, at)
							}
						}
						method = ""
					}
					if v := keyword(d, "method"); v != nil && name == "RequestMapping" {
						last := v.Dotted()
						method = value.Tail(last, 1)
					}
				} else if name == "Path" && ok || name == "Route" && ok {
					p = text
				}
			}
			if method != "" {
				r.add(method, hung+"/"+strings.TrimPrefix(p, "/"), f, at)
			}
		}
		for i, k := range n.Kids {
			if i == 0 || n.Alias != code.Whole { // a value is made of the same nodes as what stands beside it
				visit(k, class)
			}
		}
	}
	visit(f.Body, "")
}

// mark gives the last name of a decorator and its path, if it has one.
func mark(d *code.Node) (name, p string, ok bool) {
	n := d
	if d.Is(code.Call) {
		n = d.Kid(0)
		for _, a := range d.Args() {
			if a.Is(code.Keyword) && (a.Name == "value" || a.Name == "path" || a.Name == "rule") {
				a = a.Kid(0)
			} else if a.Is(code.Keyword) {
				continue
			}
			if a.Is(code.Array) {
				a = a.Kid(0)
			}
			if a.Is(code.String) && !ok {
				p, ok = a.Name, true
			}
		}
	}
	name = n.Dotted()
	return value.Tail(name, 1), p, ok
}

// django reads urlpatterns: path(), re_path() and include().
func (r *router) django(module, prefix string, from *code.File, depth int) {
	to, ok := r.e.Loader.Resolve(from, module, "")
	f := r.e.Loader.File(to)
	if !ok || f == nil || f.Body == nil || depth > 6 {
		return
	}
	for _, site := range f.Calls {
		fn := site.Node.Kid(0)
		if !fn.Is(code.Name) || fn.Name != "path" && fn.Name != "re_path" && fn.Name != "url" {
			continue
		}
		p, ok := routeText(r.e, site.Node.Kid(1), site.Scope)
		if !ok {
			continue
		}
		if fn.Name != "path" {
			p = strings.TrimSuffix(strings.TrimPrefix(p, "^"), "$")
		}
		view := site.Node.Kid(2)
		if view.Is(code.Call) && view.Kid(0).Is(code.Name) && view.Kids[0].Name == "include" {
			if view.Kid(1).Is(code.String) {
				r.django(view.Kids[1].Name, prefix+p, f, depth+1)
			}
			continue
		}
		if strings.HasSuffix(view.Dotted(), "site.urls") {
			continue
		}
		r.add("any", prefix+p, f, site.Node)
	}
}

// handlers are programs that answer every path with one function.
func (r *router) handlers(files []*code.File) {
	for _, f := range files {
		for _, site := range f.Calls {
			n := site.Node
			callee := n.Kid(0)
			path := callee.Dotted()
			last := value.Tail(path, 1)
			switch {
			case last == "createServer" && n.Kid(len(n.Kids)-1).Is(code.Func):
				r.add("any", "*", f, n)
			case path == "Deno.serve" && n.Kid(len(n.Kids)-1).Is(code.Func):
				r.add("any", "*", f, n)
			case path == "Bun.serve" && n.Kid(1).Is(code.Object):
				for _, p := range n.Kids[1].Kids {
					switch {
					case p.Is(code.Pair) && p.Name == "fetch":
						r.add("any", "*", f, p)
					case p.Is(code.Pair) && p.Name == "routes" && p.Kid(0).Is(code.Object):
						for _, k := range p.Kids[0].Kids {
							if k.Is(code.Pair) && strings.HasPrefix(k.Name, "/") {
								r.add("any", k.Name, f, k)
							}
						}
					}
				}
			}
		}
		if f.Lang == code.Python {
			for _, cls := range f.Classes {
				for _, m := range cls.Kid(1).Kids {
					if verb, ok := strings.CutPrefix(m.Name, "do_"); m.Is(code.Func) && ok {
						r.add(verb, "*", f, m)
					}
				}
			}
		}
	}
}

// Pages are routes that a framework makes of files by their place: index.html,
// app/page.tsx, pages/index.vue, src/routes/+page.svelte, public/index.php.
func Pages(has func(string) bool, c *fact.Component) []fact.Route {
	var list []fact.Route
	add := func(method, p string, names ...string) {
		for _, n := range names {
			if n := c.Path(n); has(n) {
				list = append(list, fact.Route{Method: method, Path: p, At: Line1(n)})
				return
			}
		}
	}
	ends := func(stem string) []string {
		var all []string
		for _, e := range []string{".tsx", ".jsx", ".ts", ".js", ".vue", ".svelte", ".astro", ".mdx", ".md"} {
			all = append(all, stem+e)
		}
		return all
	}
	switch {
	case c.Runtime == "static":
		add("GET", "/", "index.html", "public/index.html")
	case c.Runtime == "php":
		add("any", "*", "public/index.php", "web/index.php", "index.php")
	case c.Runtime == "node":
		_, next := c.Dep("next")
		_, nuxt := c.Dep("nuxt")
		_, kit := c.Dep("@sveltejs/kit")
		_, astro := c.Dep("astro")
		if next || nuxt || kit || astro {
			for _, stem := range []string{"app/page", "src/app/page", "pages/index", "src/pages/index", "app/pages/index", "src/routes/+page"} {
				add("GET", "/", ends(stem)...)
			}
			for _, word := range []string{"health", "healthz", "api/health", "up"} {
				for _, stem := range []string{"app/" + word + "/route", "src/app/" + word + "/route", "pages/" + word, "server/routes/" + word, "src/routes/" + word + "/+server", "src/pages/" + word} {
					add("GET", "/"+word, ends(stem)...)
				}
			}
		}
	}
	return list
}

// healthWords are the last parts of paths that tell whether a program is well.
var healthWords = map[string]bool{"health": true, "healthz": true, "healthcheck": true, "health-check": true, "health_check": true, "livez": true, "readyz": true, "live": true, "ready": true, "liveness": true, "readiness": true, "ping": true, "up": true, "status": true, "_health": true, "alive": true, "heartbeat": true, "_status": true}

// Health reports whether a path is one that a host may ask whether a program
// is well.
func Health(p string) bool { return healthWords[strings.ToLower(path.Base(p))] }
