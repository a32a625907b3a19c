package check_test

import "testing"

const rubyTree = `
-- config.ru --
require_relative "app"
run Gate
-- app.rb --
require "sinatra/base"
class Gate < Sinatra::Base
end
-- .ruby-version --
3.4.7
`

const goTree = "\n-- main.go --\npackage main\n\nimport \"net/http\"\nimport \"github.com/go-chi/chi/v5\"\nimport \"os\"\n\nfunc main() { http.ListenAndServe(\":\"+or(os.Getenv(\"PORT\")), chi.NewRouter()) }\n\nfunc or(p string) string {\n\tif p == \"\" {\n\t\treturn \"8080\"\n\t}\n\treturn p\n}\n"

const phpTree = `
-- public/index.php --
<?php
use Slim\Factory\AppFactory;
require __DIR__ . '/../vendor/autoload.php';
$app = AppFactory::create();
$app->run();
`

const rustTree = `
-- src/main.rs --
use axum::Router;
use std::env;
fn main() { let app = Router::new(); println!("{}", env::var("PORT").unwrap()); }
-- rust-toolchain.toml --
[toolchain]
channel = "1.95.0"
`

func TestManifestsOfOtherEcosystems(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a gem that is required and not declared", "-- Gemfile --\nsource \"https://rubygems.org\"\ngem \"puma\", \"7.1.0\"\n" + rubyTree, []string{"manifest/undeclared app.rb:1 pushed=blocker"}},
		{"twin: declared, or of the standard library", "-- Gemfile --\nsource \"https://rubygems.org\"\ngem \"puma\", \"7.1.0\"\ngem \"sinatra\", \"4.2.1\", require: \"sinatra/base\"\n" + rubyTree + "-- lib.rb --\nrequire \"json\"\n", nil},
		{"a lock that holds another version of a gem", "-- Gemfile --\ngem \"puma\", \"~> 7.0\"\ngem \"sinatra\", \"~> 4.2\"\n-- Gemfile.lock --\nGEM\n  specs:\n    puma (6.6.0)\n    sinatra (4.2.1)\n\nPLATFORMS\n  x86_64-linux\n\nDEPENDENCIES\n  puma (~> 6.0)\n" + rubyTree, []string{"manifest/lock-stale Gemfile.lock:3 pushed=blocker"}},
		{"a lock made for a laptop only", "-- Gemfile --\ngem \"puma\", \"~> 7.0\"\ngem \"sinatra\", \"~> 4.2\"\n-- Gemfile.lock --\nGEM\n  specs:\n    puma (7.1.0)\n    sinatra (4.2.1)\n\nPLATFORMS\n  arm64-darwin-24\n" + rubyTree, []string{"manifest/lock-stale Gemfile.lock:7 pushed=blocker"}},
		{"gems without a version and without a lock", "-- Gemfile --\ngem \"puma\"\ngem \"sinatra\", \"~> 4.2\"\n" + rubyTree, []string{"manifest/unpinned Gemfile:1 pushed=risk"}},
		{"the server only for development", "-- Gemfile --\ngem \"sinatra\", \"4.2.1\"\ngroup :development do\n  gem \"puma\", \"7.1.0\"\nend\n-- Procfile --\nweb: bundle exec puma -p $PORT\n" + rubyTree, []string{"manifest/dev-only Gemfile:3 pushed=blocker"}},
		{"a server that no gem gives", "-- Gemfile --\ngem \"sinatra\", \"4.2.1\"\n-- Procfile --\nweb: bundle exec puma -p $PORT\n" + rubyTree, []string{"start/program-undeclared Procfile:1 pushed=blocker"}},

		{"a module that is imported and not required", "-- go.mod --\nmodule example.test/gate\n\ngo 1.25\n" + goTree, []string{"manifest/undeclared main.go:4 pushed=blocker"}},
		{"required, and no go.sum", "-- go.mod --\nmodule example.test/gate\n\ngo 1.25\n\nrequire github.com/go-chi/chi/v5 v5.2.3\n" + goTree, []string{"manifest/lock-missing go.mod:1 pushed=blocker"}},
		{"a go.sum of another version", "-- go.mod --\nmodule example.test/gate\n\ngo 1.25\n\nrequire github.com/go-chi/chi/v5 v5.2.3\n-- go.sum --\ngithub.com/go-chi/chi/v5 v5.1.0 h1:aa=\n" + goTree, []string{"manifest/lock-stale go.sum:1 pushed=blocker"}},
		{"twin: replaced by a folder, and the standard library", "-- go.mod --\nmodule example.test/gate\n\ngo 1.25\n\nrequire github.com/go-chi/chi/v5 v5.2.3\n\nreplace github.com/go-chi/chi/v5 => ./chi\n-- go.sum --\n-- chi/go.mod --\nmodule github.com/go-chi/chi/v5\n-- chi/chi.go --\npackage chi\n" + goTree, nil},

		{"a namespace whose package is not declared", `-- composer.json --
{ "require": { "php": "~8.4.0", "monolog/monolog": "3.9.0" } }
` + phpTree, []string{"manifest/undeclared public/index.php:2 pushed=blocker"}},
		{"a composer.lock that does not satisfy", `-- composer.json --
{
  "require": { "php": "~8.4.0", "slim/slim": "^4.15" }
}
-- composer.lock --
{
  "packages": [
    { "name": "slim/slim", "version": "3.12.5" }
  ]
}
` + phpTree, []string{"manifest/lock-stale composer.lock:3 pushed=blocker"}},
		{"any version of a package", `-- composer.json --
{ "require": { "php": "~8.4.0",
  "slim/slim": "*" } }
` + phpTree, []string{"manifest/unpinned composer.json:2 pushed=risk"}},

		{"a crate that is used and not declared", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dependencies]\ntokio = \"=1.48.0\"\n" + rustTree, []string{"manifest/undeclared src/main.rs:1 pushed=blocker"}},
		{"a crate for tests only", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dev-dependencies]\naxum = \"=0.8.6\"\n" + rustTree, []string{"manifest/dev-only Cargo.toml:4 pushed=blocker"}},
		{"a Cargo.lock of the time before", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dependencies]\naxum = \"0.8\"\n-- Cargo.lock --\nversion = 4\n[[package]]\nname = \"axum\"\nversion = \"0.7.9\"\n" + rustTree, []string{"manifest/lock-stale Cargo.lock:2 pushed=blocker"}},
		{"no Cargo.lock", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dependencies]\naxum = \"0.8\"\n" + rustTree, []string{"manifest/lock-missing Cargo.toml:1 pushed=risk"}},
		{"twin: renamed, with a dash, and a module of its own", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dependencies]\naxum = { package = \"axum\", version = \"=0.8.6\" }\ntower-http = \"=0.6.6\"\n-- Cargo.lock --\n[[package]]\nname = \"axum\"\nversion = \"0.8.6\"\n[[package]]\nname = \"tower-http\"\nversion = \"0.6.6\"\n-- src/main.rs --\nuse axum::Router;\nuse tower_http::cors::CorsLayer;\nmod routes;\nuse routes::all;\nuse crate::routes::more;\nenum Night { Clear }\nuse Night::*;\nfn main() {}\n-- src/routes.rs --\npub fn all() {}\npub fn more() {}\n-- rust-toolchain --\n1.95.0\n", nil},

		{"a mix.lock without a dependency", "-- mix.exs --\ndefmodule Gate.MixProject do\n  use Mix.Project\n  def project, do: [app: :gate, elixir: \"~> 1.18\", deps: deps()]\n  def application, do: [mod: {Gate, []}]\n  defp deps do\n    [{:bandit, \"~> 1.8\"}, {:jason, \"~> 1.4\"}]\n  end\nend\n-- mix.lock --\n%{\n  \"bandit\": {:hex, :bandit, \"1.8.0\", \"a\"},\n}\n-- .tool-versions --\nelixir 1.19.3\n", []string{"manifest/lock-stale mix.lock:1 pushed=blocker"}},
		{"a name that the import map lacks", "-- deno.json --\n{ \"tasks\": { \"start\": \"deno run -NE main.ts\" }, \"imports\": { \"@std/http\": \"jsr:@std/http@1.0.21\" } }\n-- .tool-versions --\ndeno 2.5.6\n-- main.ts --\nimport { Hono } from \"@hono/hono\";\nimport { x } from \"jsr:@std/path@1\";\nimport { y } from \"@std/http/file\";\nDeno.serve(new Hono().fetch);\n", []string{"manifest/undeclared main.ts:1 pushed=blocker"}},
		{"a floating version of Gradle", "-- build.gradle --\nplugins {\n  id 'java'\n  id 'application'\n}\njava { toolchain { languageVersion = JavaLanguageVersion.of(21) } }\ndependencies {\n  implementation 'io.javalin:javalin:6.+'\n  implementation \"org.slf4j:slf4j-simple:2.0.17\"\n}\napplication { mainClass = 'hill.Gate' }\n-- src/main/java/hill/Gate.java --\npackage hill;\npublic class Gate { public static void main(String[] a) { } }\n", []string{"manifest/unpinned build.gradle:7 pushed=risk"}},
	})
}

func TestPinsOfOtherEcosystems(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"nothing pins Ruby", "-- Gemfile --\ngem \"sinatra\", \"4.2.1\"\ngem \"puma\", \"7.1.0\"\n-- config.ru --\nrequire \"sinatra\"\nrun Sinatra::Application\n", []string{"pin/missing Gemfile:1 pushed=risk"}},
		{"the Gemfile against the version file", "-- Gemfile --\nruby \"3.3.6\"\ngem \"sinatra\", \"4.2.1\"\ngem \"puma\", \"7.1.0\"\n" + rubyTree, []string{"pin/disagree .ruby-version:1 pushed=risk"}},
		{"a Gemfile that reads a file that is not there", "-- Gemfile --\nruby file: \".ruby\"\ngem \"sinatra\", \"4.2.1\"\ngem \"puma\", \"7.1.0\"\n-- config.ru --\nrequire \"sinatra\"\nrun Sinatra::Application\n", []string{"pin/malformed Gemfile:1 pushed=risk"}},
		{"Ruby that has ended", "-- Gemfile --\nruby \"~> 3.1.0\"\ngem \"sinatra\", \"4.2.1\"\ngem \"puma\", \"7.1.0\"\n-- config.ru --\nrequire \"sinatra\"\nrun Sinatra::Application\n", []string{"pin/end-of-life Gemfile:1 pushed=risk"}},
		{"PHP without an upper end", `-- composer.json --
{ "require": {
  "php": ">=8.2", "slim/slim": "4.15.1" } }
` + phpTree, []string{"pin/loose composer.json:2 pushed=risk"}},
		{"PHP that ends soon", `-- composer.json --
{ "require": {
  "php": "~8.2.0", "slim/slim": "4.15.1" } }
` + phpTree, []string{"pin/end-of-life composer.json:2 pushed=advice"}},
		{"a platform that the constraint excludes", `-- composer.json --
{ "require": { "php": "^8.4", "slim/slim": "4.15.1" },
  "config": { "platform": { "php": "8.3.6" } } }
` + phpTree, []string{"pin/disagree composer.json:2 pushed=risk"}},
		{"twin: caret within a major version", `-- composer.json --
{ "require": { "php": "^8.3", "slim/slim": "4.15.1" } }
` + phpTree, nil},
		{"a toolchain file that moves", "-- Cargo.toml --\n[package]\nname = \"gate\"\n[dependencies]\naxum = \"=0.8.6\"\n-- src/main.rs --\nuse axum::Router;\nfn main() {}\n-- rust-toolchain.toml --\n[toolchain]\nchannel = \"stable\"\n", []string{"pin/loose rust-toolchain.toml:2 pushed=risk"}},
		{"twin: a lower bound is a constraint", "-- Cargo.toml --\n[package]\nname = \"gate\"\nrust-version = \"1.70\"\n[dependencies]\naxum = \"=0.8.6\"\n-- src/main.rs --\nuse axum::Router;\nfn main() {}\n", nil},
		{".NET that has ended", "-- Gate.csproj --\n<Project Sdk=\"Microsoft.NET.Sdk.Web\">\n  <PropertyGroup>\n    <TargetFramework>net6.0</TargetFramework>\n  </PropertyGroup>\n</Project>\n-- Program.cs --\nvar x = 1;\n", []string{"pin/end-of-life Gate.csproj:3 pushed=risk"}},
		{"an SDK older than the target", "-- Gate.csproj --\n<Project Sdk=\"Microsoft.NET.Sdk.Web\">\n  <PropertyGroup>\n    <TargetFramework>net10.0</TargetFramework>\n  </PropertyGroup>\n</Project>\n-- global.json --\n{ \"sdk\": { \"version\": \"9.0.300\" } }\n-- Program.cs --\nvar x = 1;\n", []string{"pin/disagree global.json:1 pushed=blocker"}},
		{"classes newer than the container's Java", `-- pom.xml --
<project><groupId>hill</groupId><artifactId>gate</artifactId><version>1</version>
<properties><maven.compiler.release>21</maven.compiler.release></properties></project>
-- src/main/java/Gate.java --
public class Gate { public static void main(String[] a) { } }
-- Dockerfile --
FROM maven:3.9-eclipse-temurin-21 AS build
COPY . .
RUN mvn package
FROM eclipse-temurin:17-jre-noble
COPY --from=build target/gate-1.jar /gate.jar
CMD ["java", "-jar", "/gate.jar"]
`, []string{"pin/disagree Dockerfile:4 image=blocker"}},
		{"twin: a container of a later Java", `-- pom.xml --
<project><groupId>hill</groupId><artifactId>gate</artifactId><version>1</version>
<properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/Gate.java --
public class Gate { public static void main(String[] a) { } }
-- Dockerfile --
FROM maven:3.9-eclipse-temurin-21 AS build
COPY . .
RUN mvn package
FROM eclipse-temurin:21-jre-noble
COPY --from=build target/gate-1.jar /gate.jar
CMD ["java", "-jar", "/gate.jar"]
`, nil},
		{"a compiler older than the module asks for", "-- go.mod --\nmodule example.test/gate\n\ngo 1.26\n-- main.go --\npackage main\n\nfunc main() {}\n-- Dockerfile --\nFROM golang:1.25-alpine3.22 AS build\nCOPY . .\nRUN go build -o /gate .\nFROM scratch\nCOPY --from=build /gate /gate\nCMD [\"/gate\"]\n", []string{"pin/disagree Dockerfile:1 pushed=risk image=blocker", "pin/end-of-life Dockerfile:1 image=risk"}},
		{"twin: a newer one", "-- go.mod --\nmodule example.test/gate\n\ngo 1.24\n-- main.go --\npackage main\n\nfunc main() {}\n-- Dockerfile --\nFROM golang:1.26-alpine3.22 AS build\nCOPY . .\nRUN go build -o /gate .\nFROM scratch\nCOPY --from=build /gate /gate\nCMD [\"/gate\"]\n", nil},
		{"versions of Maven through a property", `-- pom.xml --
<project><groupId>hill</groupId><artifactId>gate</artifactId><version>1</version>
<properties>
  <jdk>seventeen</jdk>
  <java.version>${jdk}</java.version>
</properties></project>
-- src/main/java/Gate.java --
public class Gate { public static void main(String[] a) { } }
`, []string{"pin/malformed pom.xml:3 pushed=risk", "start/missing pom.xml:1 pushed=blocker"}},
	})
}

func TestRuntimeAmbiguousAndMisplaced(t *testing.T) {
	t.Parallel()
	const both = `
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.14
` + server + flaskApp
	runCases(t, []ruleCase{
		{"two runtimes in one folder", both, []string{"runtime/ambiguous requirements.txt:1 pushed=risk", "start/missing requirements.txt:1 pushed=blocker"}},
		{"twin: a process file decides", both + "-- Procfile --\nweb: gunicorn app:app\n", nil},
		{"twin: one of them only builds pages", `
-- package.json --
{ "name": "pages", "private": true, "engines": { "node": "24.x" }, "scripts": { "build": "sass a.scss a.css" }, "devDependencies": { "sass": "1.93.3" } }
-- a.scss --
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.14
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"the manifest in a subfolder", `
-- backend/package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- backend/server.js --
require("express")().listen(process.env.PORT || 3000);
-- README.md --
`, []string{"runtime/misplaced backend/package.json:1 pushed=blocker"}},
		{"twin: two components", `
-- backend/package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- backend/server.js --
require("express")().listen(process.env.PORT || 3000);
-- frontend/package.json --
{ "name": "site", "scripts": { "build": "vite build" }, "devDependencies": { "vite": "7.2.2" } }
`, nil},
		{"twin: a workspace", `
-- package.json --
{ "private": true, "workspaces": ["backend"] }
-- backend/package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
-- backend/server.js --
require("express")().listen(process.env.PORT || 3000);
`, nil},
		{"what starts is at the root, what it needs is not", `
-- app.py --
from flask import Flask
app = Flask(__name__)
@app.get("/")
def home():
    return "clear"
-- Procfile --
web: gunicorn app:app
-- .python-version --
3.14
-- config/requirements.txt --
flask==3.1.2
gunicorn==23.0.0
`, []string{"runtime/misplaced config/requirements.txt:1 pushed=blocker"}},
		{"a Gemfile in lower case", `
-- gemfile --
gem "sinatra", "4.2.1"
-- .ruby-version --
3.4.7
-- config.ru --
require "sinatra"
run Sinatra::Application
`, []string{"runtime/misnamed gemfile:1 pushed=blocker"}},
	})
}
