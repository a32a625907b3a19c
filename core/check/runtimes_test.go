package check_test

import (
	"fmt"
	"strings"
	"testing"
)

// TestRuntimes surveys a tree of each runtime: what it is, what pins it, what
// declares and locks, what the build makes, how a host starts it.
func TestRuntimes(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, want string }{
		"Ruby, Sinatra": {`
-- Gemfile --
source "https://rubygems.org"
ruby file: ".ruby-version"
gem "sinatra", "~> 4.2"
gem "puma", ">= 7"
group :development, :test do
  gem "rspec"
end
-- Gemfile.lock --
GEM
  specs:
    puma (7.1.0)
    rspec (3.13.2)
    sinatra (4.2.1)

RUBY VERSION
   ruby 3.4.7p58
-- .ruby-version --
3.4.7
-- config.ru --
require_relative "app"
run Gate
-- app.rb --
require "sinatra/base"
class Gate < Sinatra::Base
end
`, ". ruby Sinatra|pin .ruby-version 3.4.7|pin Gemfile.lock 3.4.7|Gemfile bundler Gemfile.lock|web bundle exec puma -p ${PORT:-9292} → config.ru"},
		"Java, Spring Boot by Maven": {`
-- pom.xml --
<project>
  <parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>4.0.0</version><relativePath/></parent>
  <groupId>hill</groupId><artifactId>gate</artifactId><version>1.2.0</version>
  <properties><java.version>21</java.version></properties>
  <dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
  <build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build>
</project>
-- src/main/java/hill/Gate.java --
package hill;
public class Gate { public static void main(String[] a) { } }
`, ". java Spring Boot|pin java.version 21|pom.xml maven |makes jar target/gate-1.2.0.jar fat|web java -Dserver.port=${PORT:-8080} -jar target/gate-1.2.0.jar → target/gate-1.2.0.jar"},
		"Java, plain, by Gradle in Kotlin": {`
-- settings.gradle.kts --
rootProject.name = "gate"
-- build.gradle.kts --
plugins {
    application
    id("com.gradleup.shadow") version "9.2.2"
}
version = "0.3"
java { toolchain { languageVersion = JavaLanguageVersion.of(21) } }
dependencies {
    implementation("io.javalin:javalin:6.7.0")
    testImplementation("org.junit.jupiter:junit-jupiter:6.0.0")
}
application { mainClass = "hill.Gate" }
-- src/main/java/hill/Gate.java --
package hill;
public class Gate { public static void main(String[] a) { } }
`, ". java Javalin|pin toolchain 21|build.gradle.kts gradle |makes jar build/libs/gate-0.3-all.jar fat|makes folder build/install/gate a start script and the libraries|web java -jar build/libs/gate-0.3-all.jar → build/libs/gate-0.3-all.jar"},
		"a module of several, by Maven": {`
-- pom.xml --
<project><groupId>hill</groupId><artifactId>dome</artifactId><version>1</version><packaging>pom</packaging>
<properties><maven.compiler.release>21</maven.compiler.release></properties>
<modules><module>lib</module><module>web</module></modules></project>
-- lib/pom.xml --
<project><parent><groupId>hill</groupId><artifactId>dome</artifactId><version>1</version></parent><artifactId>lib</artifactId></project>
-- web/pom.xml --
<project><parent><groupId>hill</groupId><artifactId>dome</artifactId><version>1</version></parent><artifactId>web</artifactId>
<build><finalName>site</finalName></build></project>
-- web/src/main/java/Site.java --
public class Site { public static void main(String[] a) { } }
`, "web java |pin compiler release 21|web/pom.xml maven |makes jar web/target/site.jar plain"},
		"Go, of several commands": {`
-- go.mod --
module example.test/dome/gate

go 1.25.0

toolchain go1.25.4

require github.com/go-chi/chi/v5 v5.2.3
-- go.sum --
github.com/go-chi/chi/v5 v5.2.3 h1:aa=
github.com/go-chi/chi/v5 v5.2.3/go.mod h1:bb=
-- cmd/migrate/main.go --
package main

func main() {}
-- cmd/server/main.go --
package main

import (
	"cmp"
	"net/http"
	"os"

	"example.test/dome/gate/internal/routes"
)

func main() { http.ListenAndServe(":"+cmp.Or(os.Getenv("PORT"), "8080"), routes.All()) }
-- internal/routes/routes.go --
package routes

import "github.com/go-chi/chi/v5"

func All() *chi.Mux { return chi.NewRouter() }
`, ". go chi|pin go.mod 1.25.0|pin go toolchain go1.25.4|go.mod go go.sum|makes binary migrate |makes binary server |web go run ./cmd/server → cmd/server/main.go"},
		"PHP, Slim": {`
-- composer.json --
{ "require": { "php": "~8.4.0", "ext-pdo": "*", "slim/slim": "^4.15" } }
-- composer.lock --
{ "packages": [ { "name": "slim/slim", "version": "4.15.1" } ], "packages-dev": [] }
-- public/index.php --
<?php
require __DIR__ . '/../vendor/autoload.php';
`, ". php Slim|pin composer require ~8.4.0|composer.json composer composer.lock|serves public|web php-fpm → public/index.php"},
		".NET": {`
-- Gate.sln --
-- Directory.Packages.props --
<Project><ItemGroup><PackageVersion Include="Serilog" Version="4.3.0" /></ItemGroup></Project>
-- src/Gate/Gate.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup><TargetFramework>net10.0</TargetFramework><AssemblyName>Hill.Gate</AssemblyName></PropertyGroup>
  <ItemGroup><PackageReference Include="Serilog" /></ItemGroup>
</Project>
-- src/Gate/Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.Run($"http://*:{Environment.GetEnvironmentVariable("PORT") ?? "8080"}");
-- tests/Gate.Tests/Gate.Tests.csproj --
<Project Sdk="Microsoft.NET.Sdk"><ItemGroup><PackageReference Include="Microsoft.NET.Test.Sdk" Version="18.0.0" /></ItemGroup></Project>
-- global.json --
{ "sdk": { "version": "10.0.100" } }
`, "src/Gate dotnet ASP.NET Core|pin TargetFramework net10.0|pin global.json 10.0.100|src/Gate/Gate.csproj nuget |makes assembly Hill.Gate.dll needs the runtime|web dotnet Hill.Gate.dll → src/Gate/Hill.Gate.dll"},
		"Rust, in a workspace": {`
-- Cargo.toml --
[workspace]
members = ["gate", "stars"]
[workspace.dependencies]
axum = "0.8"
[workspace.package]
rust-version = "1.85"
-- Cargo.lock --
version = 4
[[package]]
name = "axum"
version = "0.8.6"
[[package]]
name = "stars"
version = "0.1.0"
-- rust-toolchain.toml --
[toolchain]
channel = "1.95.0"
-- gate/Cargo.toml --
[package]
name = "gate"
rust-version.workspace = true
[dependencies]
axum.workspace = true
stars = { path = "../stars" }
-- gate/src/main.rs --
use axum::Router;
use stars::night;
mod routes;
use routes::all;
fn main() { all(); }
-- gate/src/routes.rs --
pub fn all() {}
-- stars/Cargo.toml --
[package]
name = "stars"
-- stars/src/lib.rs --
pub fn night() {}
`, "gate rust Axum|pin rust-version 1.85|pin rust-toolchain 1.95.0|gate/Cargo.toml cargo Cargo.lock|makes binary target/release/gate gate/src/main.rs|web ./target/release/gate → target/release/gate"},
		"Elixir, Phoenix": {`
-- mix.exs --
defmodule Gate.MixProject do
  use Mix.Project
  def project, do: [app: :gate, version: "0.1.0", elixir: "~> 1.18", deps: deps()]
  defp deps do
    [
      {:phoenix, "~> 1.8.1"},
      {:bandit, "~> 1.8"},
      {:phoenix_live_reload, "~> 1.2", only: :dev}
    ]
  end
end
-- mix.lock --
%{
  "bandit": {:hex, :bandit, "1.8.0", "a"},
  "phoenix": {:hex, :phoenix, "1.8.1", "a"},
  "phoenix_live_reload": {:hex, :phoenix_live_reload, "1.6.1", "a"},
}
-- .tool-versions --
elixir 1.19.3-otp-28
erlang 28.1
`, ". elixir Phoenix,Bandit|pin mix.exs ~> 1.18|pin elixir version 1.19.3-otp-28|pin .tool-versions 28.1|mix.exs mix mix.lock|makes release _build/prod/rel/gate |web mix phx.server → "},
		"Deno": {`
-- deno.json --
{ "tasks": { "start": "deno run --allow-net --allow-env main.ts" }, "imports": { "@hono/hono": "jsr:@hono/hono@^4.10.4" } }
-- .tool-versions --
deno 2.5.6
-- main.ts --
import { Hono } from "@hono/hono";
Deno.serve(new Hono().fetch);
`, ". deno Hono|pin .tool-versions 2.5.6|deno.json deno |web deno run --allow-net --allow-env main.ts → main.ts"},
		"Bun": {`
-- package.json --
{ "name": "gate", "packageManager": "bun@1.3.2", "scripts": { "start": "bun run index.ts" }, "dependencies": { "elysia": "1.4.15" } }
-- bun.lock --
{ "lockfileVersion": 1, "packages": { "elysia": ["elysia@1.4.15"], } }
-- index.ts --
import { Elysia } from "elysia";
new Elysia().get("/", () => "up").listen(process.env.PORT ?? 3000);
`, ". bun Elysia|pin packageManager bun@1.3.2|package.json bun bun.lock|web bun run index.ts → index.ts"},
		"a page": {`-- index.html --
<h1>clear tonight</h1>
-- style.css --
`, ". static |makes files . as they are"},
		"a site that a generator makes": {`-- hugo.toml --
baseURL = 'https://hill.test/'
-- content/_index.md --
clear
`, ". static Hugo|makes files public "},
		"only a container file": {`-- Dockerfile --
FROM nginx:1.29-alpine3.22
COPY site /usr/share/nginx/html
-- site/x.txt --
`, ". container "},
		"Angular": {`
-- package.json --
{ "name": "site", "scripts": { "build": "ng build" }, "dependencies": { "@angular/core": "21.0.0" } }
-- angular.json --
{ "projects": { "site": { "projectType": "application", "architect": { "build": { "builder": "@angular/build:application", "options": { "outputPath": "out/site" } } } } } }
`, ". node browser application,Angular|package.json npm |makes files out/site/browser "},
		"Vite, with the folder computed": {`
-- package.json --
{ "name": "site", "scripts": { "build": "vite build" }, "devDependencies": { "vite": "7.2.2", "vue": "3.5.24" } }
-- vite.config.js --
import { resolve } from "node:path";
const out = "../public/site";
export default { root: "web", build: { outDir: resolve(import.meta.dirname, "served") } };
`, ". node browser application,Vue,Vite|package.json npm |makes files web/served "},
		"SvelteKit, with an adapter for files": {`
-- package.json --
{ "name": "site", "scripts": { "build": "vite build" }, "devDependencies": { "@sveltejs/kit": "2.48.4", "svelte": "5.43.2", "vite": "7.2.2" } }
-- svelte.config.js --
import adapter from "@sveltejs/adapter-static";
export default { kit: { adapter: adapter({ pages: "site" }) } };
`, ". node browser application,SvelteKit,Svelte,Vite|package.json npm |makes files site "},
		"Next.js, exported": {`
-- package.json --
{ "name": "site", "scripts": { "build": "next build" }, "dependencies": { "next": "16.0.1", "react": "19.2.0" } }
-- next.config.mjs --
const config = { output: "export" };
export default config;
`, ". node browser application,Next.js,React|package.json npm |makes files out "},
	} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := run(t, plant(t, c.tree), nil)
			var blocks []string
			for _, x := range r.Components {
				list := []string{x.ID + " " + x.Engine() + " " + strings.Join(x.Frameworks, ",")}
				for _, p := range x.Pins {
					list = append(list, "pin "+p.From+" "+p.Text)
				}
				for _, m := range x.Manifests {
					list = append(list, m.File+" "+m.Manager+" "+m.Lock)
				}
				if x.Root != "" {
					list = append(list, "serves "+x.Root)
				}
				for _, a := range x.Artefacts {
					list = append(list, fmt.Sprintf("makes %s %s %s", a.Kind, a.Path, a.Detail))
				}
				for _, s := range x.Starts {
					if s.Source == "assumed" || s.Source == "container" {
						continue
					}
					file := ""
					if s.Target != nil {
						file = s.Target.File
					}
					list = append(list, s.Process+" "+s.Command+" → "+file)
				}
				blocks = append(blocks, strings.Join(list, "|"))
			}
			if got := strings.Join(blocks, "\n"); got != c.want {
				t.Errorf(`surveyed as
	%s
not
	%s`, got, c.want)
			}
			for _, f := range r.Findings {
				if f.Rule != "pin/missing" && f.Rule != "start/missing" && f.Rule != "pin/disagree" {
					t.Errorf("%s: %s at %s: %s", f.Level, f.Rule, f.Where, f.Message)
				}
			}
			for _, f := range r.Findings {
				if f.Rule == "pin/disagree" {
					t.Errorf("%s at %s: %s", f.Rule, f.Where, f.Message)
				}
			}
		})
	}
}
