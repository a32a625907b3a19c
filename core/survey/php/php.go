// Package php surveys PHP components: composer.json, the document root,
// Laravel, Symfony and plain scripts (Composer and PHP documentation, read
// 2026-11).
package php

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of PHP.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of PHP for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "php" }

var frameworks = [][2]string{{"laravel/framework", "Laravel"}, {"laravel/lumen-framework", "Lumen"}, {"symfony/framework-bundle", "Symfony"}, {"symfony/symfony", "Symfony"}, {"slim/slim", "Slim"}, {"cakephp/cakephp", "CakePHP"}, {"yiisoft/yii2", "Yii"}, {"codeigniter4/framework", "CodeIgniter"}, {"laminas/laminas-mvc", "Laminas"}, {"mezzio/mezzio", "Mezzio"}, {"flightphp/core", "Flight"}, {"league/route", "League Route"}}

// roots are the folders that a web server serves, in the order in which
// frameworks name them.
var roots = []string{"public", "web", "www", "webroot", "htdocs", "public_html", ""}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	served := false
	for _, root := range roots {
		served = served || t.Has(survey.Join(survey.Join(f.Dir, root), "index.php"))
	}
	switch {
	case f.Has("artisan"), served && (f.Has("composer.json") || f.Has("Procfile") && survey.Hinted(t, f, "php") && !f.Has("package.json")), f.Has("index.php") && !within(t, f.Dir):
		return 2
	case f.Has("composer.json"):
		if f.Has("Procfile") && survey.Hinted(t, f, "php") || f.Has("Dockerfile") && survey.Hinted(t, f, "php") {
			return 2
		}
		return 1
	}
	return 0
}

// within reports whether a folder is the document root of another component.
func within(t *source.Tree, dir string) bool {
	for d := dir; d != ""; {
		d = source.Dir(d)
		if t.Has(survey.Join(d, "composer.json")) || t.Has(survey.Join(d, "index.php")) {
			return true
		}
	}
	return false
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	name := c.Path("composer.json")
	d, broken := survey.Document(t, name)
	if broken {
		c.Complete, c.Broken = false, true
	}
	if d != nil {
		c.Manifests = append(c.Manifests, &fact.Manifest{File: name, Manager: "composer"})
		for _, table := range []string{"require", "require-dev"} {
			for _, x := range d.Get(table).Items() {
				switch {
				case x.Key == "php" || x.Key == "php-64bit":
					if table == "require" {
						c.Pins = append(c.Pins, survey.ReadPin("php", "composer require", x.Str(), survey.RankManifest, survey.Inside(x.At())))
					}
				case strings.HasPrefix(x.Key, "ext-") || strings.HasPrefix(x.Key, "lib-") || !strings.Contains(x.Key, "/"):
				default:
					dep := survey.Declare(strings.ToLower(x.Key), x.Str(), version.Composer, name, x.KeyAt())
					dep.Dev, dep.Group = table == "require-dev", table
					dep.Linked = strings.HasPrefix(x.Str(), "dev-") || strings.HasPrefix(x.Str(), "@")
					dep.Pinned = dep.Pinned && x.Str() != "@dev"
					c.Dependencies = append(c.Dependencies, dep)
				}
			}
		}
		if p := d.Get("config", "platform", "php"); p.Str() != "" {
			c.Pins = append(c.Pins, survey.ReadPin("php", "composer platform", p.Text, survey.RankManifest, survey.Inside(p.At())))
		}
		for _, repo := range d.Get("repositories").Items() {
			if u := repo.Get("url"); repo.Get("type").Str() == "path" && u.Str() != "" {
				if _, in := source.Join(c.Dir, strings.TrimSuffix(u.Text, "/*")); !in {
					c.Outside = append(c.Outside, fact.Path{Text: u.Text, At: survey.Inside(u.At())})
				}
			}
		}
	}
	survey.TakeLocks(t, c, r.locks, false, "composer")
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "php")...)
	survey.FrameworksOf(c, frameworks)
	for _, root := range roots {
		if t.Has(survey.Join(survey.Join(c.Dir, root), "index.php")) {
			if c.Root = survey.Join(c.Dir, root); root == "" && c.Dir == "" {
				c.Root = "."
			}
			break
		}
	}
	for _, front := range []string{"vite.config.js", "webpack.mix.js", "webpack.config.js"} {
		if f.Has(front) && f.Has("package.json") {
			c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "files", Path: survey.Join(survey.Join(c.Dir, "public"), "build"), Build: "npm run build", At: place.Whole(c.Path(front))})
		}
	}
}

// spaces say which package gives a namespace. Source: the packages' own
// autoload tables, read 2026-11.
var spaces = [][2]string{
	{`Slim\Psr7\`, "slim/psr7"}, {`Slim\Views\`, "slim/twig-view"}, {`Slim\`, "slim/slim"}, {`Monolog\`, "monolog/monolog"}, {`GuzzleHttp\Psr7\`, "guzzlehttp/psr7"}, {`GuzzleHttp\`, "guzzlehttp/guzzle"}, {`Twig\`, "twig/twig"}, {`Dotenv\`, "vlucas/phpdotenv"},
	{`Ramsey\Uuid\`, "ramsey/uuid"}, {`Carbon\`, "nesbot/carbon"}, {`League\Flysystem\`, "league/flysystem"}, {`League\Route\`, "league/route"}, {`Predis\`, "predis/predis"}, {`PHPMailer\PHPMailer\`, "phpmailer/phpmailer"}, {`Nyholm\Psr7\`, "nyholm/psr7"}, {`FastRoute\`, "nikic/fast-route"}, {`DI\`, "php-di/php-di"},
	{`Doctrine\ORM\`, "doctrine/orm"}, {`Doctrine\DBAL\`, "doctrine/dbal"}, {`Laravel\Sanctum\`, "laravel/sanctum"}, {`Spatie\Permission\`, "spatie/laravel-permission"}, {`Intervention\Image\`, "intervention/image"}, {`Maatwebsite\Excel\`, "maatwebsite/excel"}, {`Psr\Log\`, "psr/log"}, {`Psr\Http\Message\`, "psr/http-message"},
}

// brings are packages that a package always installs beside itself.
var brings = map[string]string{
	"laravel/framework": "monolog/monolog nesbot/carbon ramsey/uuid vlucas/phpdotenv league/flysystem guzzlehttp/guzzle guzzlehttp/psr7 psr/log psr/http-message doctrine/dbal", "slim/slim": "nikic/fast-route psr/log psr/http-message", "slim/psr7": "psr/http-message", "monolog/monolog": "psr/log", "guzzlehttp/guzzle": "guzzlehttp/psr7 psr/http-message", "doctrine/orm": "doctrine/dbal",
	"slim/twig-view": "twig/twig slim/slim", "symfony/twig-bundle": "twig/twig", "symfony/framework-bundle": "psr/log", "league/route": "nikic/fast-route psr/http-message", "nyholm/psr7": "psr/http-message", "symfony/monolog-bundle": "monolog/monolog", "laminas/laminas-diactoros": "psr/http-message",
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, dir string) survey.Modules {
	m := &modules{t: t, c: c}
	if d, _ := survey.Document(t, c.Path("composer.json")); d != nil {
		for _, table := range []string{"autoload", "autoload-dev"} {
			for _, x := range d.Get(table, "psr-4").Items() {
				m.own = append(m.own, space{x.Key, x})
			}
		}
	}
	return m
}

type space struct {
	prefix string
	at     *document.Node
}

type modules struct {
	t   *source.Tree
	c   *fact.Component
	own []space
}

// Resolve implements survey.Modules: classes of the component's own
// namespaces (PSR-4).
func (m *modules) Resolve(_ *code.File, class, _ string) (string, bool) {
	p, ok := m.path(class)
	if ok && m.t.Has(p) {
		return p, true
	}
	return "", false
}

func (m *modules) path(class string) (string, bool) {
	for _, s := range m.own {
		rest, ok := strings.CutPrefix(class, s.prefix)
		if !ok || s.prefix == "" {
			continue
		}
		dir := s.at.Str()
		if s.at.Kind == document.List && len(s.at.Kids) > 0 {
			dir = s.at.Kids[0].Str()
		}
		if p, ok := source.Join(m.c.Dir, survey.Join(strings.TrimSuffix(dir, "/"), strings.ReplaceAll(rest, `\`, "/"))+".php"); ok {
			return p, true
		}
	}
	return "", false
}

// Classify implements survey.Modules.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp)}
	if rel := imp.Name; strings.HasPrefix(rel, ".") || strings.HasSuffix(rel, ".php") {
		p, in := source.Join(source.Dir(from.Name), rel)
		i.Relative = true
		switch {
		case !in || strings.Contains(p, "vendor/") || strings.Contains(p, "/cache/") || strings.Contains(p, "storage/"):
			i.Standard = true // made by Composer or by the program
		case m.t.Has(p):
			i.File = p
		default:
			if e, ok := m.t.Fold(p); ok {
				i.Missing, i.Case = true, e.Path
			} else if i.Missing = strings.HasPrefix(rel, "."); !i.Missing {
				i.Standard = true // looked up along the include path
			}
		}
		return []fact.Import{i}
	}
	if p, ok := m.path(imp.Name); ok {
		if m.t.Has(p) {
			i.File = p
		} else if e, ok := m.t.Fold(p); ok {
			i.Missing, i.Case = true, e.Path
		} else {
			i.Standard = true // a function, a namespace, made by a build
		}
		return []fact.Import{i}
	}
	for _, s := range spaces {
		if !strings.HasPrefix(imp.Name, s[0]) {
			continue
		}
		if _, ok := m.c.Dep(s[1]); !ok {
			for _, d := range m.c.Dependencies {
				if strings.Contains(" "+brings[d.Name]+" ", " "+s[1]+" ") {
					i.Standard = true
				}
			}
			if m.c.HasLock && len(m.c.Locks[0].Of("", s[1])) > 0 {
				i.Standard = true
			}
		}
		if !i.Standard {
			i.Package = s[1]
		}
		return []fact.Import{i}
	}
	i.Standard = true
	return []fact.Import{i}
}

// Sources implements survey.Compiler: the folders that the autoloader serves.
func (r *Runtime) Sources(t *source.Tree, c *fact.Component) []string {
	d, _ := survey.Document(t, c.Path("composer.json"))
	var dirs []string
	for _, x := range d.Get("autoload", "psr-4").Items() {
		if s := strings.TrimSuffix(strings.TrimPrefix(x.Str(), "./"), "/"); s != "" && s != "." {
			dirs = append(dirs, s)
		}
	}
	return survey.SourcesIn(t, c, dirs, ".php")
}

// Entry implements survey.Runtime: the host's web server serves the document
// root.
func (r *Runtime) Entry(t *source.Tree, c *fact.Component) (string, string, bool) {
	for _, root := range roots {
		if p := survey.Join(survey.Join(c.Dir, root), "index.php"); t.Has(p) {
			return "php-fpm", p, true
		}
	}
	return "", "", false
}

// scripted reports whether a script of the manifest that does not serve it names a
// folder: it may make it when the packages are installed (Composer documentation,
// "Scripts").
func scripted(t *source.Tree, c *fact.Component, folder string) (found bool) {
	d, _ := survey.Document(t, c.Path("composer.json"))
	if d == nil {
		return false
	}
	d.Get("scripts").Walk(func(_ []string, n *document.Node) {
		if text, ok := n.Scalar(); ok && !strings.Contains(text, "php -S") && survey.Names(text, folder) {
			found = true
		}
	})
	return found
}

// Target implements survey.Targeter: web servers run the index of the document
// root, the server of PHP itself the file that it is given.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if f.Known == nil || f.Known.Runtime != "php" {
		return nil, "", false
	}
	tg := &fact.Target{Named: "index.php", At: f.At, Kind: command.FileTarget}
	root := c.Root
	if root == "." {
		root = ""
	}
	if w, ok, _ := f.Flag("-t", "--docroot"); ok && w.Literal() {
		if p, in := source.Join(f.Dir, w.Text); in {
			root = p
			if _, ignored := t.IgnoreRule(p + "/"); p != "" && !ignored && !t.HasDir(p) && !t.Has(p) && !t.Has(survey.Join(f.Dir, "package.json")) && !scripted(t, c, p) { // nor does a build make it
				return &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Folder: true}, "", true
			}
		}
	}
	for i, w := range f.Free() {
		program := false // a program without an ending: php bin/console
		if p, in := source.Join(f.Dir, w.Text); i == 0 && in && w.Literal() && path.Ext(w.Text) == "" {
			program = t.Has(p)
		}
		if w.Literal() && (program || strings.HasSuffix(w.Text, ".php") || w.Text == "artisan") {
			tg.Named, tg.At = w.Text, w.At
			if p, in := source.Join(f.Dir, w.Text); in && t.Has(p) {
				tg.File = p
			}
			return tg, "", true
		}
	}
	if p := survey.Join(root, "index.php"); t.Has(p) {
		tg.File = p
		return tg, "", true
	}
	return nil, "", false
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(*source.Tree, *fact.Component) (string, bool) { return "", false }

// Framework implements survey.Runtime.
func (*Runtime) Framework(pkg string) string { return survey.Of(frameworks, pkg) }
