package lock_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"ubique/core/lock"
	"ubique/core/source"
)

func read(t testing.TB, name, text string) *lock.Lock {
	t.Helper()
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644); err != nil {
		t.Fatal(err)
	}
	tree, err := source.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { tree.Close() })
	return lock.NewReader(tree).Read(name)
}

func show(l *lock.Lock) string {
	var list []string
	for _, p := range l.Packages {
		s := p.Name + " " + p.Version
		if p.Dir != "" {
			s = p.Dir + "/" + s
		}
		if p.Dev {
			s += " dev"
		}
		if p.Local {
			s += " local"
		}
		list = append(list, fmt.Sprintf("%s :%d", s, l.At(p.Off).Line))
	}
	return strings.Join(list, "|")
}

func TestFormats(t *testing.T) {
	for _, c := range []struct{ name, text, want, format string }{
		{"package-lock.json", `{
  "lockfileVersion": 3,
  "packages": {
    "": { "dependencies": { "koa": "^3.0.0" } },
    "node_modules/koa": { "version": "3.1.1", "dependencies": { "accepts": "^1" } },
    "node_modules/@hill/stars": { "resolved": "stars", "link": true },
    "node_modules/koa/node_modules/accepts": { "version": "1.0.0" },
    "node_modules/jest": { "version": "30.2.0", "dev": true },
    "apps/gate/node_modules/koa": { "version": "2.16.2" }
  }
}`, "koa 3.1.1 :5|@hill/stars  local :6|jest 30.2.0 dev :8|apps/gate/koa 2.16.2 :9", "3"},
		{"package-lock.json", `{ "lockfileVersion": 1, "dependencies": { "koa": { "version": "2.0.0", "requires": { "co": "4" }, "dependencies": { "co": { "version": "4.6.0" } } },
 "jest": { "version": "29.0.0", "dev": true } } }`, "koa 2.0.0 :1|jest 29.0.0 dev :2", "1"},
		{"npm-shrinkwrap.json", `{ "lockfileVersion": 2, "packages": { "": {}, "node_modules/koa": { "version": "2.0.0" } }, "dependencies": { "koa": { "version": "2.0.0" } } }`, "koa 2.0.0 :1", "2"},
		{"yarn.lock", "# yarn lockfile v1\n\n\"@hill/stars@^1.0.0\", \"@hill/stars@^1.2.0\":\n  version \"1.2.3\"\n  dependencies:\n    version \"9\"\n\nkoa@3:\n  version \"3.1.1\"\n", "@hill/stars 1.2.3 :3|koa 3.1.1 :8", "1"},
		{"yarn.lock", "__metadata:\n  version: 8\n  cacheKey: 10\n\n\"gate@workspace:.\":\n  version: 0.0.0-use.local\n\n\"koa@npm:^2.0.0, koa@npm:^2.1.0\":\n  version: 2.16.2\n  resolution: \"koa@npm:2.16.2\"\n", "gate 0.0.0-use.local local :5|koa 2.16.2 :8", "berry 8"},
		{"pnpm-lock.yaml", "lockfileVersion: 5.4\nspecifiers:\n  koa: ^2.0.0\ndependencies:\n  koa: 2.16.2_ajv@8.0.0\ndevDependencies:\n  '@types/koa': 2.15.0\npackages:\n  /koa/2.16.2:\n    dev: false\n", "koa 2.16.2 :5|@types/koa 2.15.0 dev :7", "5.4"},
		{"pnpm-lock.yaml", "lockfileVersion: '9.0'\n\nimporters:\n\n  .:\n    dependencies:\n      koa:\n        specifier: ^3.0.0\n        version: 3.1.1(ajv@8.0.0)\n  apps/gate:\n    devDependencies:\n      stars:\n        specifier: workspace:*\n        version: link:../stars\n      old:\n        specifier: npm:koa@^2\n        version: koa@2.16.2\n\npackages:\n\n  koa@3.1.1:\n    resolution: {integrity: x}\n", "koa 3.1.1 :7|apps/gate/stars link:../stars dev local :12|apps/gate/old 2.16.2 dev :15", "9.0"},
		{"bun.lock", "{\n  \"lockfileVersion\": 1, // of today\n  \"workspaces\": { \"\": { \"name\": \"gate\", \"dependencies\": { \"koa\": \"^3\", } } },\n  \"packages\": {\n    \"koa\": [\"koa@3.1.1\", \"\", { \"dependencies\": { \"co\": \"4\" } }, \"sha512-x\"],\n    \"koa/co\": [\"co@4.6.0\", \"\", {}, \"\"],\n    \"@hill/stars\": [\"@hill/stars@workspace:stars\"],\n  }\n}\n", "koa 3.1.1 :5|@hill/stars workspace:stars local :7", "1"},
		{"deno.lock", `{ "version": "5", "specifiers": { "jsr:@std/http@^1.0.0": "1.0.21", "npm:koa@3": "3.1.1_ajv@8" }, "npm": { "koa@3.1.1": {} } }`, "jsr:@std/http 1.0.21 :1|npm:koa 3.1.1 :1", "5"},
		{"deno.lock", `{ "version": "3", "packages": { "specifiers": { "npm:koa@3": "npm:koa@3.1.1" } } }`, "npm:koa 3.1.1 :1", "3"},
		{"poetry.lock", "[[package]]\nname = \"Flask_Login\"\nversion = \"0.6.3\"\ngroups = [\"main\"]\n\n[package.dependencies]\nversion = \"9\"\n\n[[package]]\nname = \"pytest\"\nversion = \"9.0\"\ngroups = [\"dev\"]\n\n[metadata]\nlock-version = \"2.1\"\npython-versions = \">=3.12\"\n", "flask-login 0.6.3 :1|pytest 9.0 dev :9", "2.1"},
		{"uv.lock", "version = 1\nrequires-python = \">=3.12\"\n\n[[package]]\nname = \"ticker\"\nversion = \"0.1.0\"\nsource = { virtual = \".\" }\n\n[[package]]\nname = \"flask\"\nversion = \"3.1.2\"\nsource = { registry = \"https://index\" }\n", "ticker 0.1.0 local :4|flask 3.1.2 :9", "1"},
		{"pdm.lock", "[metadata]\ngroups = [\"default\"]\nlock_version = \"4.5.0\"\n\n[[package]]\nname = \"flask\"\nversion = \"3.1.2\"\ngroups = [\"default\"]\n", "flask 3.1.2 :5", "4.5.0"},
		{"pylock.toml", "lock-version = \"1.0\"\nrequires-python = \">=3.12\"\n[[packages]]\nname = \"flask\"\nversion = \"3.1.2\"\n[packages.sdist]\nname = \"x\"\n", "flask 3.1.2 :3", ""},
		{"Pipfile.lock", `{ "_meta": { "requires": { "python_version": "3.14" } }, "default": { "Flask": { "version": "==3.1.2" } }, "develop": { "pytest": { "version": "==9.0" } } }`, "flask 3.1.2 :1|pytest 9.0 dev :1", ""},
		{"Gemfile.lock", "PATH\n  remote: stars\n  specs:\n    stars (0.1.0)\n\nGEM\n  remote: https://rubygems.org/\n  specs:\n    nokogiri (1.18.1-x86_64-linux-gnu)\n      racc (~> 1.4)\n    rack (3.1.8)\n\nPLATFORMS\n  x86_64-linux\n\nDEPENDENCIES\n  rack (~> 3.1)\n  stars!\n\nRUBY VERSION\n   ruby 3.4.1p0\n\nBUNDLED WITH\n   2.6.2\n", "stars 0.1.0 local :4|nokogiri 1.18.1 :9|rack 3.1.8 :11", ""},
		{"composer.lock", `{ "content-hash": "x", "packages": [ { "name": "Slim/Slim", "version": "4.15.0", "require": { "php": "^8" } } ], "packages-dev": [ { "name": "phpunit/phpunit", "version": "v12.0" } ] }`, "slim/slim 4.15.0 :1|phpunit/phpunit v12.0 dev :1", ""},
		{"Cargo.lock", "version = 4\n\n[[package]]\nname = \"axum\"\nversion = \"0.8.6\"\nsource = \"registry\"\ndependencies = [\n \"tower\",\n]\n", "axum 0.8.6 :3", "4"},
		{"go.sum", "github.com/go-chi/chi/v5 v5.2.3 h1:aa=\ngithub.com/go-chi/chi/v5 v5.2.3/go.mod h1:bb=\ngolang.org/x/net v0.47.0/go.mod h1:cc=\n", "github.com/go-chi/chi/v5 v5.2.3 :1|golang.org/x/net v0.47.0 dev :3", ""},
		{"packages.lock.json", `{ "version": 1, "dependencies": { "net10.0": { "Serilog": { "type": "Direct", "requested": "[4.3.0, )", "resolved": "4.3.0" }, "stars": { "type": "Project" } } } }`, "serilog 4.3.0 :1|stars  local :1", "1"},
		{"gradle.lockfile", "# comment\nio.javalin:javalin:6.7.0=runtimeClasspath\nempty=annotationProcessor\n", "io.javalin:javalin 6.7.0 :2", ""},
		{"mix.lock", "%{\n  \"bandit\": {:hex, :bandit, \"1.8.0\", \"aa\", [:mix], [], \"hexpm\", \"bb\"},\n  \"stars\": {:git, \"https://x\", \"cc\", []},\n}\n", "bandit 1.8.0 :2|stars  local :3", ""},
	} {
		l := read(t, c.name, c.text)
		if got := show(l); got != c.want || l.Format != c.format || l.Problem != "" {
			t.Errorf("%s holds\n\t%s\nnot\n\t%s\nformat %q, problem %q", c.name, got, c.want, l.Format, l.Problem)
		}
	}
}

func TestWhatElseALockSays(t *testing.T) {
	l := read(t, "Gemfile.lock", "GEM\n  specs:\n    rack (3.1.8)\n\nPLATFORMS\n  arm64-darwin-24\n\nDEPENDENCIES\n  rack (~> 3.1)!\n\nRUBY VERSION\n   ruby 3.4.1p0\n\nBUNDLED WITH\n   2.6.2\n")
	if l.Runtime != "3.4.1p0" || l.Tool != "2.6.2" || len(l.Platforms) != 1 || l.At(l.PlatformsOff).Line != 6 || l.Asked[""]["rack"] != "~> 3.1" {
		t.Errorf("a Gemfile.lock says %q %q %v %v", l.Runtime, l.Tool, l.Platforms, l.Asked)
	}
	l = read(t, "pnpm-lock.yaml", "lockfileVersion: '9.0'\nimporters:\n  apps/gate:\n    dependencies:\n      koa:\n        specifier: ^2\n        version: 2.16.2\n  apps/site:\n    dependencies:\n      koa:\n        specifier: ^3\n        version: 3.1.1\n")
	if a, b := l.Of("apps/gate", "koa"), l.Of("apps/site", "koa"); len(a) != 1 || a[0].Version != "2.16.2" || len(b) != 1 || b[0].Version != "3.1.1" || l.Asked["apps/gate"]["koa"] != "^2" {
		t.Errorf("the members of a workspace get %v and %v", a, b)
	}
}

func TestBrokenLocks(t *testing.T) {
	for name, text := range map[string]string{
		"package-lock.json": `{ "lockfileVersion": 3, "packages": { "node_modules/koa": { "version": "3.1.1"`, "bun.lockb": "\x00\x01", "composer.lock": `{ "packages": [ "`, "pnpm-lock.yaml": "<<<<<<< HEAD\n",
		"deno.lock": strings.Repeat(`{"a":`, 300), "Pipfile.lock": "",
	} {
		if l := read(t, name, text); l.Problem == "" {
			t.Errorf("%s is taken for whole: %v", name, l.Packages)
		}
	}
}

// large writes a lock of many lines.
func large(packages int) string {
	var b strings.Builder
	b.WriteString("{\n  \"lockfileVersion\": 3,\n  \"packages\": {\n    \"\": {}")
	for i := range packages {
		fmt.Fprintf(&b, ",\n    \"node_modules/p%d\": {\n      \"version\": \"%d.2.3\",\n      \"resolved\": \"https://registry/p%d.tgz\",\n      \"integrity\": \"sha512-%040d\",\n      \"dependencies\": {\n        \"a\": \"^1.0.0\"\n      },\n      \"engines\": {\n        \"node\": \">=18\"\n      }\n    }", i, i, i, i)
	}
	b.WriteString("\n  }\n}\n")
	return b.String()
}

// BenchmarkLock reads a lock of 60,000 lines.
func BenchmarkLock(b *testing.B) {
	dir := b.TempDir()
	if err := os.WriteFile(filepath.Join(dir, "package-lock.json"), []byte(large(5450)), 0o644); err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		tree, err := source.Open(dir)
		if err != nil {
			b.Fatal(err)
		}
		if l := lock.NewReader(tree).Read("package-lock.json"); len(l.Packages) != 5450 {
			b.Fatalf("%d packages, %s", len(l.Packages), l.Problem)
		}
		tree.Close()
	}
}

func FuzzLocks(f *testing.F) {
	f.Add("package-lock.json", `{"packages":{"node_modules/a":{"version":"1"}}}`)
	f.Add("yarn.lock", "a@1:\n  version \"1\"\n")
	f.Add("pnpm-lock.yaml", "lockfileVersion: 6\ndependencies:\n  a:\n    version: 1(b)\n")
	f.Add("mix.lock", "\"a\": {:hex, :a, \"1\"")
	f.Fuzz(func(t *testing.T, name, text string) {
		if lock.Manager(name) == "" {
			return
		}
		l := read(t, name, text)
		for _, p := range l.Packages {
			if at := l.At(p.Off); at.Line < 1 {
				t.Fatalf("%s stands nowhere: %v", p.Name, at)
			}
		}
		l.Names()
		l.Of("a/b", "a")
	})
}
