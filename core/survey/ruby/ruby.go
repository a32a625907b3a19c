// Package ruby surveys Ruby components: Gemfile, Gemfile.lock, Rack files,
// Rails applications (Bundler, RubyGems and Rack documentation, read 2026-11).
package ruby

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Ruby.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Ruby for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "ruby" }

// frameworks are gems that make a program a server, by the name to show.
var frameworks = [][2]string{{"rails", "Rails"}, {"railties", "Rails"}, {"sinatra", "Sinatra"}, {"roda", "Roda"}, {"hanami", "Hanami"}, {"grape", "Grape"}, {"padrino", "Padrino"}, {"cuba", "Cuba"}, {"rack", "Rack"}, {"jekyll", "Jekyll"}, {"middleman", "Middleman"}, {"sidekiq", "Sidekiq"}}

var webGems = []string{"rails", "railties", "sinatra", "roda", "hanami", "grape", "padrino", "rack", "puma", "unicorn", "thin", "falcon", "webrick"}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	gemfile := f.Has("Gemfile") || f.Has("gems.rb")
	switch {
	case f.Has("config.ru") && (gemfile || f.Dir == "" || f.Has("Procfile") || f.Has("Dockerfile")):
		return 2
	case f.Has("config.ru"): // what stands above it may start it
		return survey.Weak
	case gemfile && t.Has(survey.Join(f.Dir, "config/application.rb")), gemfile && (f.Has("app.rb") || f.Has("server.rb") || f.Has("main.rb")):
		return 2
	case gemfile:
		name := survey.Join(f.Dir, "Gemfile")
		if f.Has("gems.rb") {
			name = survey.Join(f.Dir, "gems.rb")
		}
		for _, g := range webGems {
			if survey.Mentions(t, name, `"`+g+`"`, "'"+g+"'") && !hasSuffix(f, ".gemspec") {
				return 2
			}
		}
		if f.Has("Procfile") && survey.Hinted(t, f, "ruby") || f.Has("Dockerfile") && survey.Hinted(t, f, "ruby") && !f.Has("package.json") {
			return 2
		}
		return 1
	}
	for dir := f.Dir; dir != "" && !f.Has("Procfile") && !f.Has("Dockerfile"); { // a part of what stands above it
		dir = source.Dir(dir)
		if t.Has(survey.Join(dir, "Gemfile")) || t.Has(survey.Join(dir, "gems.rb")) {
			return 0
		}
	}
	for _, n := range []string{"app.rb", "server.rb", "main.rb"} {
		if f.Has(n) && survey.Mentions(t, survey.Join(f.Dir, n), "sinatra", "WEBrick", "Rack::", "roda") {
			return 2
		}
	}
	return 0
}

func hasSuffix(f survey.Folder, end string) bool {
	for n := range f.Names {
		if strings.HasSuffix(n, end) {
			return true
		}
	}
	return false
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, _ survey.Folder) {
	c.Complete = true
	for _, n := range []string{"Gemfile", "gems.rb"} {
		if t.Has(c.Path(n)) {
			g := &gemfile{t: t, c: c}
			g.read(c.Path(n))
			break
		}
	}
	survey.TakeLocks(t, c, r.locks, false, "bundler")
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "ruby")...)
	if c.HasLock {
		l := c.Locks[0]
		if v, _, _ := strings.Cut(l.Runtime, "p"); v != "" {
			c.Pins = append(c.Pins, survey.ReadPin("ruby", "Gemfile.lock", v, survey.RankFile, l.At(l.RuntimeOff)))
		}
		c.Locked = map[string]bool{}
		for _, n := range l.Names() {
			c.Locked[n] = true
		}
	}
	survey.FrameworksOf(c, frameworks)
}

// gemfile reads a Gemfile as code (Bundler, "gemfile(5)").
type gemfile struct {
	t *source.Tree
	c *fact.Component
	f *code.File
	m *fact.Manifest
}

func (g *gemfile) read(name string) {
	g.f = survey.Code(g.t, name, code.Ruby)
	if g.f == nil {
		g.c.Complete = false
		return
	}
	g.m = &fact.Manifest{File: name, Manager: "bundler"}
	g.c.Manifests = append(g.c.Manifests, g.m)
	g.block(g.f.Body, nil, false)
}

// block reads the statements of a Gemfile under the groups that surround them.
func (g *gemfile) block(n *code.Node, groups []string, optional bool) {
	if n == nil {
		return
	}
	for _, s := range n.Kids {
		switch {
		case s.Is(code.If):
			g.block(s.Kid(1), groups, true)
			g.block(s.Kid(2), groups, true)
			continue
		case s.Is(code.Block):
			g.block(s, groups, optional)
			continue
		case !s.Is(code.ExprStmt):
			continue
		}
		call := s.Kid(0)
		if !call.Is(code.Call) {
			continue
		}
		var inner *code.Node
		if n := len(call.Kids); call.Kids[n-1].Is(code.Func) {
			inner = call.Kids[n-1].Kid(1)
		}
		switch survey.Callee(call) {
		case "ruby":
			g.ruby(call)
		case "gem":
			g.gem(call, groups, optional)
		case "group":
			var names []string
			for _, a := range call.Args() {
				if s, ok := survey.Literal(a); ok {
					names = append(names, s)
				}
			}
			g.block(inner, append(groups[:len(groups):len(groups)], names...), optional)
		case "source", "git", "path", "platforms", "platform", "install_if", "github":
			g.block(inner, groups, optional || survey.Callee(call) == "platforms" || survey.Callee(call) == "platform" || survey.Callee(call) == "install_if")
		case "gemspec", "eval_gemfile", "instance_eval":
			g.c.Complete = false // more is declared elsewhere
		}
	}
}

// ruby reads the directive of that name, also with file: "…".
func (g *gemfile) ruby(call *code.Node) {
	if file := survey.Named(call, "file"); file != nil {
		if name, ok := survey.Literal(file); ok && !g.t.Has(g.c.Path(name)) {
			p := fact.Pin{What: "ruby", Text: name, From: "Gemfile", Rank: survey.RankManifest, At: survey.Quoted(g.f, file), Wrong: "there is no such file", Form: "the file, or a version in place of its name"}
			g.c.Pins = append(g.c.Pins, p)
		} else if ok && path.Base(name) != ".ruby-version" && path.Base(name) != ".tool-versions" {
			if f, err := g.t.Code(g.c.Path(name)); err == nil {
				for _, l := range document.PlainLines(g.c.Path(name), f.Data, f.Lines()) {
					g.c.Pins = append(g.c.Pins, survey.ReadPin("ruby", ".ruby-version", l.Text, survey.RankFile, l.At))
					break
				}
			}
		}
		return
	}
	var parts []string
	var at *code.Node
	for _, a := range call.Args() {
		if s, ok := survey.Literal(a); ok {
			parts = append(parts, s)
			if at == nil {
				at = a
			}
		}
	}
	if at != nil {
		g.c.Pins = append(g.c.Pins, survey.ReadPin("ruby", "Gemfile", strings.Join(parts, ", "), survey.RankManifest, survey.Quoted(g.f, at)))
	}
}

// work are groups that hosts leave out (Bundler, "BUNDLE_WITHOUT").
var work = map[string]bool{"development": true, "test": true, "ci": true, "lint": true, "docs": true, "doc": true, "local": true}

func (g *gemfile) gem(call *code.Node, groups []string, optional bool) {
	args := call.Args()
	name, ok := survey.Literal(call.Kid(1))
	if !ok {
		g.c.Complete = false
		return
	}
	var specs []string
	for _, a := range args[1:] {
		if s, ok := survey.Literal(a); ok {
			specs = append(specs, s)
		}
		if a.Is(code.Array) {
			for _, k := range a.Kids {
				if s, ok := survey.Literal(k); ok {
					specs = append(specs, s)
				}
			}
		}
	}
	d := survey.Declare(name, strings.Join(specs, ", "), version.Gem, g.m.File, survey.Quoted(g.f, call.Kid(1)))
	for _, key := range []string{"group", "groups"} {
		v := survey.Named(call, key)
		for _, n := range append([]*code.Node{v}, kids(v)...) {
			if s, ok := survey.Literal(n); ok {
				groups = append(groups[:len(groups):len(groups)], s)
			}
		}
	}
	d.Dev = len(groups) > 0
	for _, w := range groups {
		d.Dev = d.Dev && work[w]
	}
	d.Group = strings.Join(groups, ", ")
	for _, key := range []string{"path", "git", "github", "gist", "branch"} {
		if v := survey.Named(call, key); v != nil {
			d.Pinned, d.Linked = true, true
			if p, ok := survey.Literal(v); ok && key == "path" {
				if _, in := source.Join(g.c.Dir, p); !in {
					g.c.Outside = append(g.c.Outside, fact.Path{Text: p, At: survey.Quoted(g.f, v)})
				}
			}
		}
	}
	if optional || survey.Named(call, "platforms") != nil || survey.Named(call, "platform") != nil || survey.Named(call, "install_if") != nil {
		d.Marker = "a condition"
	}
	g.c.Dependencies = append(g.c.Dependencies, d)
}

func kids(n *code.Node) []*code.Node {
	if n.Is(code.Array) {
		return n.Kids
	}
	return nil
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, dir string) survey.Modules {
	return &modules{t: t, c: c, dir: dir}
}

type modules struct {
	t   *source.Tree
	c   *fact.Component
	dir string
}

// gems say which gem gives a file that is required under another name than the
// gem's. Source: the gems' own file lists, read 2026-11.
var gems = map[string]string{
	"active_record": "activerecord", "active_support": "activesupport", "action_controller": "actionpack", "active_job": "activejob", "active_model": "activemodel", "action_mailer": "actionmailer", "action_view": "actionview",
	"rack/cors": "rack-cors", "rack/attack": "rack-attack", "rack/test": "rack-test", "rack/session": "rack-session", "sinatra/activerecord": "sinatra-activerecord", "sinatra/contrib": "sinatra-contrib", "sinatra/reloader": "sinatra-contrib", "sinatra/json": "sinatra-contrib", "sinatra/namespace": "sinatra-contrib", "sinatra/cookies": "sinatra-contrib",
	"mysql2": "mysql2", "pg": "pg", "sqlite3": "sqlite3", "redis": "redis", "sequel": "sequel", "bcrypt": "bcrypt", "jwt": "jwt", "httparty": "httparty", "faraday": "faraday", "nokogiri": "nokogiri", "dotenv": "dotenv", "sidekiq": "sidekiq", "sinatra": "sinatra", "roda": "roda", "rack": "rack", "rackup": "rackup", "puma": "puma", "webrick": "webrick",
	"mail": "mail", "haml": "haml", "slim": "slim", "tilt": "tilt", "oj": "oj", "concurrent": "concurrent-ruby", "concurrent-ruby": "concurrent-ruby", "bunny": "bunny", "mongo": "mongo", "mongoid": "mongoid", "grape": "grape", "rest-client": "rest-client", "httpx": "httpx", "http": "http", "zeitwerk": "zeitwerk", "tzinfo": "tzinfo",
}

// brings are gems that a gem always installs beside itself.
var brings = map[string]string{
	"rails": "activerecord activesupport actionpack activejob activemodel actionmailer actionview railties rack concurrent-ruby zeitwerk tzinfo mail nokogiri rack-session rackup", "sinatra": "rack tilt rack-session mustermann rack-protection", "roda": "rack", "grape": "activesupport rack",
	"sinatra-activerecord": "sinatra activerecord activesupport", "sinatra-contrib": "sinatra tilt rack", "activerecord": "activesupport activemodel concurrent-ruby tzinfo", "rackup": "rack webrick", "sidekiq": "redis-client rack concurrent-ruby", "dotenv-rails": "dotenv", "rack-session": "rack", "hanami": "rack zeitwerk",
}

// Resolve implements survey.Modules: require_relative, and files of lib.
func (m *modules) Resolve(from *code.File, name, _ string) (string, bool) {
	dirs := []string{m.dir, m.c.Dir, survey.Join(m.c.Dir, "lib")}
	if strings.HasPrefix(name, ".") {
		dirs = []string{source.Dir(from.Name), m.dir}
	}
	for _, d := range dirs {
		if p, ok := source.Join(d, name); ok {
			for _, end := range []string{"", ".rb"} {
				if m.t.Has(p + end) {
					return p + end, true
				}
			}
		}
	}
	return "", false
}

// Classify implements survey.Modules. A name that is neither of the tree nor
// known to come from a gem is taken for the standard library.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp)}
	if f, ok := m.Resolve(from, imp.Name, ""); ok {
		i.File = f
		return []fact.Import{i}
	}
	i.Relative = strings.HasPrefix(imp.Name, ".")
	if i.Relative {
		p, ok := source.Join(source.Dir(from.Name), imp.Name)
		i.Missing = ok
		if e, ok := m.t.Fold(p + ".rb"); ok {
			i.Case = e.Path
		}
		return []fact.Import{i}
	}
	gem := gems[imp.Name]
	if gem == "" {
		first, _, _ := strings.Cut(imp.Name, "/")
		if gem = gems[first]; gem == "" {
			if _, ok := m.c.Dep(first); ok {
				gem = first
			} else if _, ok := m.c.Dep(strings.ReplaceAll(imp.Name, "/", "-")); ok {
				gem = strings.ReplaceAll(imp.Name, "/", "-")
			}
		}
	}
	if gem == "" || m.given(gem) {
		i.Standard = true
		return []fact.Import{i}
	}
	i.Package = gem
	return []fact.Import{i}
}

// given reports whether a gem comes without being declared by itself.
func (m *modules) given(gem string) bool {
	if _, ok := m.c.Dep(gem); ok {
		return false
	}
	if m.c.Locked[gem] {
		return true
	}
	for _, d := range m.c.Dependencies {
		if strings.Contains(" "+brings[d.Name]+" ", " "+gem+" ") {
			return true
		}
	}
	return false
}

// Entry implements survey.Runtime: Rails by its own command, anything with a
// Rack file by a server for Rack, which is given the port.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	ru := c.Path("config.ru")
	if !t.Has(ru) {
		return "", "", false
	}
	if _, ok := c.Dep("puma"); ok {
		if cfg := c.Path("config/puma.rb"); t.Has(cfg) {
			return "bundle exec puma -C config/puma.rb", cfg, true
		}
		return "bundle exec puma -p ${PORT:-9292}", ru, true
	}
	return "bundle exec rackup -o 0.0.0.0 -p ${PORT:-9292}", ru, true
}

// Target implements survey.Targeter: servers for Rack load the Rack file that
// they are given, or config.ru.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if f.Known == nil {
		return nil, "", false
	}
	switch f.Known.Name {
	case "puma", "rackup", "thin", "unicorn", "falcon", "rails":
	case "ruby": // -run -e httpd FOLDER starts no file
		return nil, "", slices.ContainsFunc(f.Args, func(w command.Word) bool { return w.Text == "-run" })
	default:
		return nil, "", false
	}
	tg := &fact.Target{Named: "config.ru", At: f.At, Kind: command.FileTarget}
	for _, w := range f.Free() {
		if w.Literal() && strings.HasSuffix(w.Text, ".ru") {
			tg.Named, tg.At = w.Text, w.At
		}
	}
	if p, ok := source.Join(f.Dir, tg.Named); ok && t.Has(p) {
		tg.File = p
		return tg, "", true
	} else if p := survey.Join(f.Dir, "config/application.rb"); f.Known.Name == "rails" && t.Has(p) {
		tg.Named, tg.File = "config/application.rb", p
		return tg, "", true
	} else if tg.Named != "config.ru" {
		return tg, "", true
	}
	return nil, "", false
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	for _, n := range []string{"app.rb", "server.rb", "main.rb"} {
		if t.Has(c.Path(n)) {
			return "ruby " + n, true
		}
	}
	return "", false
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }
