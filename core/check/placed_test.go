package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
)

// placed compares the findings of the families that look at what a tree is,
// what pins and declares it, and what ships, with the places that are wanted.
// A line end is written as it stands; {CR} is a carriage return.
func placed(t *testing.T, cases []ruleCase) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			r := run(t, plant(t, strings.ReplaceAll(c.tree, "{CR}", "\r")), nil)
			var got []string
			for _, f := range r.Findings {
				if family, _, _ := strings.Cut(f.Rule, "/"); slices.Contains([]string{"runtime", "pin", "manifest", "ship"}, family) {
					got = append(got, fmt.Sprintf("%s %s:%d", f.Rule, f.Where.File, f.Where.Line))
				}
			}
			slices.Sort(got)
			got = slices.Compact(got)
			want := slices.Sorted(slices.Values(c.want))
			if !slices.Equal(got, want) {
				t.Errorf(`found
	%s
wanted
	%s`, strings.Join(got, "\n\t"), strings.Join(want, "\n\t"))
			}
		})
	}
}

func TestPlacesInTreesOfManyMakers(t *testing.T) {
	t.Parallel()
	placed(t, []ruleCase{
		{"node engines caret ok", `
-- package.json --
{
"name":"a","engines":{"node":"^24.0.0"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"nvmrc capital name", `
-- .NVMRC --
24
-- package.json --
{
"name":"a","scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"runtime/misnamed .NVMRC:1"}},
		{"nvmrc node ok but loose", `
-- .nvmrc --
node
-- package.json --
{
"name":"a","scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/loose .nvmrc:1"}},
		{"volta eol", `
-- package.json --
{
"name":"a",
"volta":{"node":"16.20.2"},
"scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/end-of-life package.json:3"}},
		{"package-lock stale nested workspace", `
-- package.json --
{
"private":true,"workspaces":["api"],"engines":{"node":"24.x"}
}
-- api/package.json --
{
"name":"api",
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"^3.0.0"}
}
-- api/s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- package-lock.json --
{"lockfileVersion":3,"packages":{"":{},
"api":{"dependencies":{"koa":"^2.0.0"}},
"node_modules/koa":{"version":"2.16.0"},
"node_modules/api":{"link":true,"resolved":"api"}}}
`, []string{"manifest/lock-stale package-lock.json:3"}},
		{"poetry lock conflict", `
-- pyproject.toml --
[tool.poetry]
name="a"
[tool.poetry.dependencies]
python="~3.13"
flask="^3.1"
gunicorn="^23"
-- poetry.lock --
[[package]]
name = "flask"
version = "3.1.2"
[[package]]
name = "gunicorn"
version = "23.0.0"
-- Pipfile.lock --
{"default":{"flask":{"version":"==2.0"}}}
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"manifest/lock-conflict Pipfile.lock:1"}},
		{"requirements twice", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
requests==2.31.0
requests==2.32.3
-- runtime.txt --
python-3.13.1
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
import requests
app=Flask(__name__)
`, []string{"manifest/duplicate requirements.txt:4"}},
		{"requirements.TXT misnamed", `
-- Requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- runtime.txt --
python-3.13.1
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"runtime/misnamed Requirements.txt:1"}},
		{"django sound uv", `
-- pyproject.toml --
[project]
name="a"
requires-python=">=3.13,<3.15"
dependencies=["django>=5.2,<6","gunicorn>=23","whitenoise"]
[dependency-groups]
dev=["pytest"]
-- uv.lock --
version = 1
[[package]]
name = "django"
version = "5.2.8"
[[package]]
name = "gunicorn"
version = "23.0.0"
[[package]]
name = "whitenoise"
version = "6.11.0"
[[package]]
name = "pytest"
version = "9.0.0"
-- Procfile --
web: gunicorn hill.wsgi
-- manage.py --
import os
os.environ.setdefault("DJANGO_SETTINGS_MODULE","hill.settings")
-- hill/__init__.py --
-- hill/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE","hill.settings")
application=get_wsgi_application()
-- hill/settings.py --
import os
DEBUG=False
ALLOWED_HOSTS=["hill.test"]
SECRET_KEY=os.environ["K"]
`, nil},
		{"python 3.9 container", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Dockerfile --
FROM python:3.9-slim-bullseye
WORKDIR /a
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn","-b","0.0.0.0:8000","app:app"]
-- app.py --
from flask import Flask
app=Flask(__name__)
-- .dockerignore --
.git
`, []string{"pin/end-of-life Dockerfile:1"}},
		{"mysqlclient slim", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
mysqlclient==2.2.7
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /a
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn","-b","0.0.0.0:8000","app:app"]
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"manifest/native-build requirements.txt:3"}},
		{"psycopg2 full image sound", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
psycopg2==2.9.11
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /a
RUN apt-get update && apt-get install -y gcc libpq-dev
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn","-b","0.0.0.0:8000","app:app"]
-- app.py --
from flask import Flask
import psycopg2
app=Flask(__name__)
`, nil},
		{"rails sound", `
-- Gemfile --
source "https://rubygems.org"
ruby "3.4.7"
gem "rails", "~> 8.1.1"
gem "pg", "~> 1.6"
gem "puma", ">= 6.0"
gem "bootsnap", require: false
group :development, :test do
  gem "debug", platforms: %i[ mri windows ]
end
-- Gemfile.lock --
GEM
  remote: https://rubygems.org/
  specs:
    bootsnap (1.18.6)
    debug (1.11.0)
    pg (1.6.2)
    pg (1.6.2-x86_64-linux)
    puma (7.1.0)
    rails (8.1.1)

PLATFORMS
  x86_64-linux

DEPENDENCIES
  bootsnap
  debug
  pg (~> 1.6)
  puma (>= 6.0)
  rails (~> 8.1.1)

RUBY VERSION
   ruby 3.4.7p58

BUNDLED WITH
   2.7.2
-- .ruby-version --
ruby-3.4.7
-- config.ru --
require_relative "config/environment"
run Rails.application
-- config/environment.rb --
require_relative "application"
Rails.application.initialize!
-- config/application.rb --
require_relative "boot"
require "rails/all"
Bundler.require(*Rails.groups)
module Hill
  class Application < Rails::Application
  end
end
-- config/boot.rb --
ENV["BUNDLE_GEMFILE"] ||= File.expand_path("../Gemfile", __dir__)
require "bundler/setup"
require "bootsnap/setup"
-- config/puma.rb --
port ENV.fetch("PORT", 3000)
-- Procfile --
web: bundle exec puma -C config/puma.rb
release: bin/rails db:migrate
-- Rakefile --
require_relative "config/application"
`, nil},
		{"ruby lock older ruby", `
-- Gemfile --
ruby "3.4.7"
gem "sinatra", "4.2.1"
gem "puma","7.1.0"
-- Gemfile.lock --
GEM
  specs:
    puma (7.1.0)
    sinatra (4.2.1)

RUBY VERSION
   ruby 3.3.5p100
-- config.ru --
require "sinatra"
run Sinatra::Application
`, []string{"pin/disagree Gemfile.lock:7"}},
		{"laravel sound", `
-- composer.json --
{"require":{"php":"^8.3","laravel/framework":"^12.0","guzzlehttp/guzzle":"^7.10"},"require-dev":{"phpunit/phpunit":"^11.5"},"autoload":{"psr-4":{"App\\":"app/"}}}
-- composer.lock --
{"packages":[{"name":"guzzlehttp/guzzle","version":"7.10.0"},{"name":"laravel/framework","version":"v12.38.1"}],"packages-dev":[{"name":"phpunit/phpunit","version":"11.5.44"}]}
-- artisan --
<?php
-- public/index.php --
<?php
use Illuminate\Http\Request;
define('LARAVEL_START', microtime(true));
require __DIR__.'/../vendor/autoload.php';
(require_once __DIR__.'/../bootstrap/app.php')->handleRequest(Request::capture());
-- bootstrap/app.php --
<?php
use Illuminate\Foundation\Application;
return Application::configure(basePath: dirname(__DIR__))->create();
-- app/Models/Night.php --
<?php
namespace App\Models;
-- package.json --
{"private":true,"scripts":{"build":"vite build","dev":"vite"},"devDependencies":{"vite":"^7.0.0","laravel-vite-plugin":"^2.0.0"}}
-- package-lock.json --
{"lockfileVersion":3,"packages":{"":{"devDependencies":{"vite":"^7.0.0","laravel-vite-plugin":"^2.0.0"}},"node_modules/vite":{"version":"7.2.2","dev":true},"node_modules/laravel-vite-plugin":{"version":"2.0.1","dev":true}}}
-- vite.config.js --
import { defineConfig } from "vite";
export default defineConfig({});
-- Procfile --
web: vendor/bin/x public/
`, nil},
		{"go sound multi", `-- go.mod --
module hill.test/gate

go 1.25.0

require (
	github.com/gorilla/mux v1.8.1
	golang.org/x/text v0.31.0 // indirect
)
-- go.sum --
github.com/gorilla/mux v1.8.1 h1:a=
github.com/gorilla/mux v1.8.1/go.mod h1:b=
golang.org/x/text v0.31.0 h1:c=
golang.org/x/text v0.31.0/go.mod h1:d=
-- cmd/gate/main.go --
package main

import (
	"log"
	"net/http"
	"os"

	"github.com/gorilla/mux"
	"hill.test/gate/internal/sky"
)

func main() {
	r := mux.NewRouter()
	_ = sky.Clear
	log.Fatal(http.ListenAndServe(":"+os.Getenv("PORT"), r))
}
-- internal/sky/sky.go --
package sky

const Clear = true
-- Procfile --
web: ./bin/gate
`, nil},
		{"go case import", `-- go.mod --
module hill.test/gate

go 1.25.0
-- main.go --
package main

import "hill.test/gate/internal/Sky"

func main() { _ = Sky.Clear }
-- internal/sky/sky.go --
package sky

const Clear = true
`, []string{"ship/case main.go:3"}},
		{"spring sound gradle", `
-- build.gradle --
plugins {
	id 'java'
	id 'org.springframework.boot' version '4.0.0'
	id 'io.spring.dependency-management' version '1.1.7'
}

group = 'hill'
version = '0.0.1-SNAPSHOT'

java {
	toolchain {
		languageVersion = JavaLanguageVersion.of(21)
	}
}

repositories {
	mavenCentral()
}

dependencies {
	implementation 'org.springframework.boot:spring-boot-starter-web'
	testImplementation 'org.springframework.boot:spring-boot-starter-test'
}
-- settings.gradle --
rootProject.name = 'gate'
-- gradlew --
#!/bin/sh
-- src/main/java/hill/GateApplication.java --
package hill;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
@SpringBootApplication
public class GateApplication { public static void main(String[] args) { SpringApplication.run(GateApplication.class, args); } }
-- Procfile --
web: java -jar build/libs/gate-0.0.1-SNAPSHOT.jar
`, nil},
		{"maven jdk11 base", `
-- pom.xml --
<project>
<groupId>h</groupId><artifactId>g</artifactId><version>1</version>
<properties><java.version>17</java.version></properties>
<build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build>
</project>
-- src/main/java/G.java --
class G { public static void main(String[] a){} }
-- Dockerfile --
FROM maven:3.9.9-eclipse-temurin-17 AS b
WORKDIR /s
COPY . .
RUN mvn -q package
FROM openjdk:11-jre-slim
COPY --from=b /s/target/g-1.jar /g.jar
CMD ["java","-jar","/g.jar"]
`, []string{"pin/disagree Dockerfile:5"}},
		{"dotnet sound", `
-- src/Api/Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup>
    <TargetFramework>net10.0</TargetFramework>
  </PropertyGroup>
  <ItemGroup>
    <PackageReference Include="Serilog.AspNetCore" Version="10.0.0" />
  </ItemGroup>
</Project>
-- src/Api/Program.cs --
var b = WebApplication.CreateBuilder(args);
var app = b.Build();
app.MapGet("/", () => "x");
app.Run();
-- Hill.sln --
x
-- global.json --
{"sdk":{"version":"10.0.100","rollForward":"latestFeature"}}
-- Dockerfile --
FROM mcr.microsoft.com/dotnet/sdk:10.0 AS build
WORKDIR /src
COPY . .
RUN dotnet publish src/Api -c Release -o /out
FROM mcr.microsoft.com/dotnet/aspnet:10.0
WORKDIR /app
COPY --from=build /out .
ENTRYPOINT ["dotnet","Api.dll"]
`, nil},
		{"dotnet runtime older", `
-- Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup>
    <TargetFramework>net10.0</TargetFramework>
  </PropertyGroup>
</Project>
-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
-- Dockerfile --
FROM mcr.microsoft.com/dotnet/sdk:10.0 AS build
COPY . .
RUN dotnet publish -c Release -o /out
FROM mcr.microsoft.com/dotnet/aspnet:8.0
COPY --from=build /out .
ENTRYPOINT ["dotnet","Api.dll"]
`, []string{"pin/disagree Dockerfile:4", "pin/end-of-life Dockerfile:4"}},
		{"rust sound workspace docker", `
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2024"
rust-version = "1.85"

[dependencies]
axum = "0.8"
tokio = { version = "1", features = ["full"] }
serde_json = "1"
-- Cargo.lock --
version = 4

[[package]]
name = "axum"
version = "0.8.7"

[[package]]
name = "gate"
version = "0.1.0"

[[package]]
name = "serde_json"
version = "1.0.145"

[[package]]
name = "tokio"
version = "1.48.0"
-- src/main.rs --
use axum::{Router, routing::get};
use std::net::SocketAddr;
mod sky;
use crate::sky::clear;
use self::sky::*;
#[tokio::main]
async fn main() {
    let app = Router::new().route("/", get(clear));
    let a = SocketAddr::from(([0,0,0,0], 3000));
    let l = tokio::net::TcpListener::bind(a).await.unwrap();
    axum::serve(l, app).await.unwrap();
}
-- src/sky.rs --
use serde_json::json;
pub async fn clear() -> String { json!({}).to_string() }
-- Dockerfile --
FROM rust:1.91-slim-trixie AS b
WORKDIR /s
COPY . .
RUN cargo build --release
FROM debian:trixie-slim
COPY --from=b /s/target/release/gate /usr/local/bin/gate
CMD ["gate"]
`, nil},
		{"phoenix sound", `
-- mix.exs --
defmodule Hill.MixProject do
  use Mix.Project

  def project do
    [
      app: :hill,
      version: "0.1.0",
      elixir: "~> 1.15",
      deps: deps()
    ]
  end

  def application do
    [mod: {Hill.Application, []}, extra_applications: [:logger]]
  end

  defp deps do
    [
      {:phoenix, "~> 1.8.1"},
      {:ecto_sql, "~> 3.13"},
      {:heroicons, github: "x/heroicons", tag: "v2.2.0", sparse: "optimized", app: false, compile: false, depth: 1},
      {:bandit, "~> 1.5"}
    ]
  end
end
-- mix.lock --
%{
  "bandit": {:hex, :bandit, "1.8.0", "a", [:mix], [], "hexpm", "b"},
  "ecto_sql": {:hex, :ecto_sql, "3.13.2", "a"},
  "heroicons": {:git, "https://x", "abc", []},
  "phoenix": {:hex, :phoenix, "1.8.1", "a"},
}
-- .tool-versions --
elixir 1.19.2-otp-28
erlang 28.1.1
-- lib/hill/application.ex --
defmodule Hill.Application do
end
`, nil},
		{"elixir old base", `
-- mix.exs --
defmodule H.MixProject do
  use Mix.Project
  def project, do: [app: :h, version: "0.1.0", elixir: "~> 1.17", deps: deps()]
  def application, do: [mod: {H, []}]
  defp deps, do: [{:plug_cowboy, "~> 2.7"}]
end
-- mix.lock --
%{
  "plug_cowboy": {:hex, :plug_cowboy, "2.7.4", "a"},
}
-- Dockerfile --
FROM elixir:1.14-alpine
WORKDIR /a
COPY . .
RUN mix deps.get && mix compile
CMD ["mix","run","--no-halt"]
`, []string{"pin/disagree Dockerfile:1", "pin/end-of-life Dockerfile:1"}},
		{"deno sound", `
-- deno.json --
{"tasks":{"start":"deno run --allow-net --allow-env main.ts"},"imports":{"@std/http":"jsr:@std/http@^1.0.0"}}
-- deno.lock --
{"version":"5","specifiers":{"jsr:@std/http@^1.0.0":"1.0.21"},"jsr":{}}
-- main.ts --
import { serveDir } from "@std/http/file-server";
Deno.serve({port:Number(Deno.env.get("PORT")??8000)},(r)=>serveDir(r));
-- .tool-versions --
deno 2.5.4
`, nil},
		{"untracked import", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");const x=require("./lib/x");new K().listen(process.env.PORT||3000)
-- lib/x.js untracked --
module.exports=1
`, []string{"ship/untracked s.js:1"}},
		{"venv tracked", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
-- venv/pyvenv.cfg --
x
-- venv/lib/python3.13/site-packages/flask/__init__.py --
-- .git --
`, []string{"ship/dependencies venv:0"}},
		{"crlf procfile", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app{CR}
-- app.py --
from flask import Flask
app=Flask(__name__)
-- .git --
`, []string{"ship/line-endings Procfile:1"}},
		{"entrypoint crlf image", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- docker-entrypoint.sh --
#!/bin/sh{CR}
set -e{CR}
exec node s.js{CR}
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
RUN npm install
EXPOSE 3000
ENTRYPOINT ["./docker-entrypoint.sh"]
`, []string{"ship/line-endings docker-entrypoint.sh:1"}},
	})
}

func TestPlacesOfPinsAndLocks(t *testing.T) {
	t.Parallel()
	placed(t, []ruleCase{
		{"mise ok", `
-- mise.toml --
[tools]
node = "24.11.0"
-- package.json --
{
"name":"a",
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"mise latest", `
-- mise.toml --
[tools]
node = "latest"
-- package.json --
{
"name":"a",
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/loose mise.toml:2"}},
		{"mise list python", `
-- mise.toml --
[tools]
python = ["3.13","3.12"]
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"sdkman eol", `
-- .sdkmanrc --
# env
java=20.0.2-tem
-- pom.xml --
<project><groupId>h</groupId><artifactId>g</artifactId><version>1</version><build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/G.java --
class G { public static void main(String[] a){} }
`, []string{"pin/end-of-life .sdkmanrc:2"}},
		{"engines vs node-version disagree", `
-- package.json --
{
"name":"a",
"engines":{"node":">=22 <23"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- .node-version --
24.1.0
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/disagree .node-version:1"}},
		{"three pins odd", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- .nvmrc --
24
-- Dockerfile --
FROM node:22-slim
WORKDIR /a
COPY . .
RUN npm install
EXPOSE 3000
CMD ["node","s.js"]
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/disagree Dockerfile:1"}},
		{"arg default base latest", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- Dockerfile --
ARG V=latest
FROM node:${V}
WORKDIR /a
COPY . .
RUN npm install
EXPOSE 3000
CMD ["node","s.js"]
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/floating-image Dockerfile:2"}},
		{"lts-alpine", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- Dockerfile --
FROM node:lts-alpine3.22
WORKDIR /a
COPY . .
RUN npm install
EXPOSE 3000
CMD ["node","s.js"]
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/floating-image Dockerfile:1"}},
		{"python major only", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- app.py --
from flask import Flask
app=Flask(__name__)
-- .python-version --
3.13
-- Dockerfile --
FROM python:3-slim
WORKDIR /a
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn","-b","0.0.0.0:8000","app:app"]
`, nil},
		{"alpine eol", `
-- Dockerfile --
FROM alpine:3.18
RUN apk add nginx
CMD ["nginx","-g","daemon off;"]
`, []string{"pin/end-of-life Dockerfile:1"}},
		{"ubuntu no tag", `
-- Dockerfile --
FROM ubuntu
RUN apt-get update
CMD ["nginx","-g","daemon off;"]
`, []string{"pin/floating-image Dockerfile:1"}},
		{"nginx versioned ok", `
-- Dockerfile --
FROM nginx:1.29-alpine
COPY site /usr/share/nginx/html
EXPOSE 80
-- site/a.txt --
x
`, nil},
		{"runtime.txt no patch ok", `
-- runtime.txt --
python-3.13
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"runtime.txt bare", `
-- runtime.txt --
3.13.1
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"pin/malformed runtime.txt:1"}},
		{"python-version v", `
-- .python-version --
v3.13
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"pin/malformed .python-version:1"}},
		{"ruby-version tilde", `
-- .ruby-version --
~> 3.4
-- Gemfile --
gem "sinatra","4.2.1"
gem "puma","7.1.0"
-- config.ru --
require "sinatra"
run Sinatra::Application
`, []string{"pin/malformed .ruby-version:1"}},
		{"engines malformed", `
-- package.json --
{
"name":"a",
"engines":{"node":"Node 24"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/malformed package.json:3"}},
		{"tool-versions lts hydro", `
-- .tool-versions --
nodejs lts-hydrogen
-- package.json --
{
"name":"a",
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/malformed .tool-versions:1"}},
		{"ci matrix no finding", `
-- .forge/workflows/ci.yml --
on: push
jobs:
  t:
    strategy:
      matrix:
        node: [22, 24]
    steps:
      - uses: x/setup@v4
        with:
          node-version: ${{ matrix.node }}
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"ci other version", `
-- .forge/workflows/ci.yml --
on: push
jobs:
  t:
    steps:
      - uses: x/setup@v4
        with:
          node-version: "18"
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"pin/disagree .forge/workflows/ci.yml:7"}},
		{"berry stale", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},"packageManager":"yarn@4.9.1",
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"^3.0.0"}
}
-- yarn.lock --
__metadata:
  version: 8

"koa@npm:^2.0.0":
  version: 2.16.2
  resolution: "koa@npm:2.16.2"
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"manifest/lock-stale yarn.lock:4"}},
		{"pnpm catalog workspace ok", `
-- package.json --
{
"private":true,"engines":{"node":"24.x"},"packageManager":"pnpm@10.22.0"
}
-- pnpm-workspace.yaml --
packages:
  - apps/*
catalog:
  koa: ^3.0.0
-- pnpm-lock.yaml --
lockfileVersion: '9.0'

catalogs:
  default:
    koa:
      specifier: ^3.0.0
      version: 3.1.1

importers:

  .: {}

  apps/api:
    dependencies:
      koa:
        specifier: 'catalog:'
        version: 3.1.1
      '@h/lib':
        specifier: workspace:^
        version: link:../lib

packages:

  koa@3.1.1:
    resolution: {integrity: x}
-- apps/api/package.json --
{
"name":"api","scripts":{"start":"node s.js"},"dependencies":{"koa":"catalog:","@h/lib":"workspace:^"}
}
-- apps/api/s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- apps/lib/package.json --
{"name":"@h/lib","version":"1.0.0"}
`, nil},
		{"pnpm member stale", `
-- package.json --
{
"private":true,"engines":{"node":"24.x"},"packageManager":"pnpm@10.22.0"
}
-- pnpm-workspace.yaml --
packages:
  - apps/*
-- pnpm-lock.yaml --
lockfileVersion: '9.0'

importers:

  .: {}

  apps/api:
    dependencies:
      koa:
        specifier: ^2.0.0
        version: 2.16.2
-- apps/api/package.json --
{
"name":"api","scripts":{"start":"node s.js"},"dependencies":{"koa":"^3.0.0"}
}
-- apps/api/s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"manifest/lock-stale pnpm-lock.yaml:9"}},
		{"optional dep absent ok", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"^3.0.0"},"optionalDependencies":{"fsevents":"^2.3.0"},"peerDependencies":{"react":">=18"}
}
-- package-lock.json --
{"lockfileVersion":3,"packages":{"":{},"node_modules/koa":{"version":"3.1.1"}}}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"overrides exact prerelease ok", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"^3.0.0-alpha.1"}
}
-- package-lock.json --
{"lockfileVersion":3,"packages":{"":{},"node_modules/koa":{"version":"3.0.0-alpha.5"}}}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"pipfile lock stale", `
-- Pipfile --
[packages]
flask = "~=3.1"
gunicorn = "*"
[requires]
python_version = "3.13"
-- Pipfile.lock --
{
 "_meta": {"requires":{"python_version":"3.13"}},
 "default": {
  "flask": {"version": "==2.3.3"},
  "gunicorn": {"version": "==23.0.0"}
 }
}
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"manifest/lock-stale Pipfile.lock:4"}},
		{"extras and markers ok", `
-- pyproject.toml --
[project]
name="a"
requires-python=">=3.13"
dependencies=["fastapi[standard]>=0.115","uvicorn[standard]>=0.30; sys_platform != 'win32'","pywin32; sys_platform == 'win32'"]
-- uv.lock --
version = 1
[[package]]
name = "fastapi"
version = "0.121.0"
[[package]]
name = "uvicorn"
version = "0.38.0"
-- Procfile --
web: uvicorn main:app --host 0.0.0.0 --port $PORT
-- main.py --
from fastapi import FastAPI
app=FastAPI()
`, nil},
		{"constraint wins ok", `
-- requirements.txt --
-c constraints.txt
flask
gunicorn
-- constraints.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"unpinned python", `
-- requirements.txt --
flask
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, []string{"manifest/unpinned requirements.txt:1"}},
		{"undeclared import dev group", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- requirements-dev.txt --
requests==2.32.3
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
import requests
from flask import Flask
app=Flask(__name__)
`, []string{"manifest/dev-only requirements-dev.txt:1"}},
		{"try import optional ok", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
try:
    import ujson as json
except ImportError:
    import json
from flask import Flask
app=Flask(__name__)
`, nil},
		{"node test-only import ok", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"},"devDependencies":{"supertest":"7.1.4"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- s.test.js --
require("supertest")
`, nil},
		{"node undeclared", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const _=require("lodash");
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"manifest/undeclared s.js:1"}},
		{"node dup tables", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"},
"devDependencies":{"koa":"2.16.2"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"manifest/duplicate package.json:4"}},
		{"yarn+npm+bun locks", `
-- package.json --
{
"name":"a","engines":{"node":"24.x"},"packageManager":"yarn@1.22.22",
"scripts":{"start":"node s.js"},"dependencies":{"koa":"^3.0.0"}
}
-- yarn.lock --
koa@^3.0.0:
  version "3.1.1"
-- package-lock.json --
{"lockfileVersion":3,"packages":{"node_modules/koa":{"version":"3.1.1"}}}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"manifest/lock-conflict package-lock.json:1"}},
		{"both python and node no decide", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- app.py --
from flask import Flask
app=Flask(__name__)
-- .python-version --
3.13
`, []string{"runtime/ambiguous requirements.txt:1"}},
		{"backend frontend two comps ok", `
-- backend/requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- backend/app.py --
from flask import Flask
app=Flask(__name__)
-- backend/.python-version --
3.13
-- backend/Procfile --
web: gunicorn app:app
-- frontend/package.json --
{
"name":"f","scripts":{"build":"vite build"},"devDependencies":{"vite":"7.2.2"}
}
-- frontend/index.html --
<script type=module src="/src/main.js"></script>
-- frontend/src/main.js --
1
`, nil},
		{"server subfolder only", `
-- README.md --
x
-- server/package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- server/s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"runtime/misplaced server/package.json:1"}},
		{"dockerfile.txt", `
-- dockerfile.txt --
FROM node:24
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"runtime/misnamed dockerfile.txt:1"}},
		{"procfile lower", `
-- procfile --
web: node s.js
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, []string{"runtime/misnamed procfile:1"}},
		{"cargo.toml lower", `
-- cargo.toml --
[package]
name="a"
-- src/main.rs --
fn main(){}
`, []string{"runtime/misnamed cargo.toml:1"}},
		{"pom upper", `
-- POM.xml --
<project/>
-- src/main/java/A.java --
class A{}
`, []string{"runtime/misnamed POM.xml:1"}},
		{"abs path ok docker", `
-- package.json --
{
"name":"a",
"engines":{"node":"24.x"},
"scripts":{"start":"node s.js"},
"dependencies":{"koa":"3.1.1"}
}
-- s.js --
require("fs").readFileSync("/home/node/app/x.csv");
const K=require("koa");new K().listen(process.env.PORT||3000)
-- Dockerfile --
FROM node:24-slim
WORKDIR /home/node/app
COPY . .
RUN npm install
EXPOSE 3000
CMD ["node","s.js"]
`, nil},
		{"abs path users", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
import os
from flask import Flask
app=Flask(__name__)
UP="/Users/mira/Documents/stars"
os.listdir(UP)
`, []string{"ship/absolute-path app.py:4"}},
	})
}

func TestPlacesInOtherLanguages(t *testing.T) {
	t.Parallel()
	placed(t, []ruleCase{
		{"go no pin but toolchain ok", `-- go.mod --
module hill.test/g

go 1.25.0
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
`, nil},
		{"go no go.mod", `-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
`, []string{"pin/missing main.go:1"}},
		{"go old toolchain base", `-- go.mod --
module hill.test/g

go 1.25.0
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
-- Dockerfile --
FROM golang:1.22-bookworm AS b
WORKDIR /s
COPY . .
RUN go build -o /app .
FROM debian:bookworm-slim
COPY --from=b /app /app
CMD ["/app"]
`, []string{"pin/disagree Dockerfile:1", "pin/end-of-life Dockerfile:1"}},
		{"go .go-version eol", `-- go.mod --
module hill.test/g

go 1.21
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
-- .go-version --
1.22.4
`, []string{"pin/end-of-life .go-version:1"}},
		{"go workspace two modules ok", `-- go.work --
go 1.25.0

use (
	./api
	./lib
)
-- api/go.mod --
module hill.test/api

go 1.25.0
-- api/main.go --
package main

import "hill.test/lib/sky"

func main() { sky.Up() }
-- lib/go.mod --
module hill.test/lib

go 1.25.0
-- lib/sky/sky.go --
package sky

func Up() {}
`, nil},
		{"go test import ok", `-- go.mod --
module hill.test/g

go 1.25.0
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
-- main_test.go --
package main

import "github.com/stretchr/testify/assert"

var _ = assert.True
`, nil},
		{"go replace outside", `-- go.mod --
module hill.test/g

go 1.25.0

require hill.test/lib v0.0.0

replace hill.test/lib => ../lib
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8080", nil) }
-- go.sum --
`, []string{"ship/outside go.mod:7"}},
		{"gradle kts catalog ok", `
-- settings.gradle.kts --
rootProject.name = "gate"
-- gradle/libs.versions.toml --
[versions]
javalin = "6.7.0"
[libraries]
javalin = { module = "io.javalin:javalin", version.ref = "javalin" }
[plugins]
shadow = { id = "com.gradleup.shadow", version = "9.2.2" }
-- build.gradle.kts --
plugins {
    java
    application
    alias(libs.plugins.shadow)
}
kotlin { jvmToolchain(21) }
dependencies { implementation(libs.javalin) }
application { mainClass.set("Gate") }
-- src/main/java/Gate.java --
import io.javalin.Javalin;
class Gate { public static void main(String[] a){ Javalin.create(); } }
`, nil},
		{"gradle java eol toolchain", `
-- build.gradle --
plugins {
 id 'java'
 id 'application'
}
java {
 toolchain {
  languageVersion = JavaLanguageVersion.of(16)
 }
}
application { mainClass = 'Gate' }
-- src/main/java/Gate.java --
class Gate { public static void main(String[] a){} }
`, []string{"pin/end-of-life build.gradle:7"}},
		{"gradle undeclared gson", `
-- build.gradle --
plugins {
 id 'java'
 id 'application'
}
java { toolchain { languageVersion = JavaLanguageVersion.of(21) } }
dependencies {
 implementation 'io.javalin:javalin:6.7.0'
}
application { mainClass = 'Gate' }
-- src/main/java/Gate.java --
import io.javalin.Javalin;
import com.google.gson.Gson;
class Gate { public static void main(String[] a){ new Gson(); } }
`, []string{"manifest/undeclared src/main/java/Gate.java:2"}},
		{"maven multi ok", `
-- pom.xml --
<project><groupId>h</groupId><artifactId>p</artifactId><version>1</version><packaging>pom</packaging><modules><module>web</module></modules><properties><maven.compiler.release>21</maven.compiler.release></properties><dependencyManagement><dependencies><dependency><groupId>com.google.code.gson</groupId><artifactId>gson</artifactId><version>2.13.2</version></dependency></dependencies></dependencyManagement></project>
-- web/pom.xml --
<project><parent><groupId>h</groupId><artifactId>p</artifactId><version>1</version></parent><artifactId>web</artifactId><packaging>war</packaging><dependencies><dependency><groupId>com.google.code.gson</groupId><artifactId>gson</artifactId></dependency></dependencies></project>
-- web/src/main/java/A.java --
import com.google.gson.Gson;
class A {}
`, nil},
		{"maven dep without version", `
-- pom.xml --
<project><groupId>h</groupId><artifactId>p</artifactId><version>1</version>
<properties><maven.compiler.release>21</maven.compiler.release></properties>
<dependencies>
<dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId></dependency>
</dependencies>
<build><plugins><plugin><artifactId>maven-shade-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/A.java --
class A { public static void main(String[] a){} }
`, []string{"manifest/unpinned pom.xml:4"}},
		{"maven duplicate", `
-- pom.xml --
<project><groupId>h</groupId><artifactId>p</artifactId><version>1</version>
<properties><maven.compiler.release>21</maven.compiler.release></properties>
<dependencies>
<dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId><version>6.7.0</version></dependency>
<dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId><version>5.6.0</version></dependency>
</dependencies>
<build><plugins><plugin><artifactId>maven-shade-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/A.java --
class A { public static void main(String[] a){} }
`, []string{"manifest/duplicate pom.xml:5"}},
		{"java container jre8", `
-- pom.xml --
<project><groupId>h</groupId><artifactId>p</artifactId><version>1</version>
<properties><maven.compiler.source>11</maven.compiler.source><maven.compiler.target>11</maven.compiler.target></properties>
<build><plugins><plugin><artifactId>maven-shade-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/A.java --
class A { public static void main(String[] a){} }
-- Dockerfile --
FROM eclipse-temurin:8-jre
COPY target/p-1.jar /p.jar
CMD ["java","-jar","/p.jar"]
`, []string{"pin/disagree Dockerfile:1"}},
		{"kotlin spring kts ok", `
-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.2.21"
  id("org.springframework.boot") version "4.0.0"
}
java { toolchain { languageVersion.set(JavaLanguageVersion.of(21)) } }
dependencies { implementation("org.springframework.boot:spring-boot-starter-web") }
-- settings.gradle.kts --
rootProject.name="g"
-- src/main/kotlin/G.kt --
import org.springframework.boot.autoconfigure.SpringBootApplication
import org.springframework.boot.runApplication
@SpringBootApplication
class G
fun main() { runApplication<G>() }
`, nil},
		{"php no lock caret", `
-- composer.json --
{"require":{"php":"^8.3","slim/slim":"^4.15"}}
-- public/index.php --
<?php
`, []string{"manifest/lock-missing composer.json:1"}},
		{"php dev-only", `
-- composer.json --
{"require":{"php":"^8.3"},
"require-dev":{
"slim/slim":"4.15.1"}}
-- public/index.php --
<?php
use Slim\App;
new App();
`, []string{"manifest/dev-only composer.json:3"}},
		{"php base eol", `
-- composer.json --
{"require":{"php":"^8.0"}}
-- public/index.php --
<?php
-- Dockerfile --
FROM php:8.1-apache
COPY . /var/www/html
`, []string{"pin/end-of-life Dockerfile:1"}},
		{"php base too old", `
-- composer.json --
{"require":{"php":"^8.4"}}
-- public/index.php --
<?php
-- Dockerfile --
FROM php:8.3-fpm-alpine
COPY . /var/www/html
CMD ["php-fpm"]
`, []string{"pin/disagree Dockerfile:1"}},
		{"ruby base older", `
-- Gemfile --
ruby "~> 3.4"
gem "sinatra","4.2.1"
gem "puma","7.1.0"
-- config.ru --
require "sinatra"
run Sinatra::Application
-- Dockerfile --
FROM ruby:3.3-slim
WORKDIR /a
COPY . .
RUN bundle install
CMD ["bundle","exec","puma"]
`, []string{"pin/disagree Dockerfile:1"}},
		{"gem dup", `
-- Gemfile --
ruby "3.4.7"
gem "sinatra", "4.2.1"
gem "puma","7.1.0"
gem "sinatra", "3.2.0"
-- config.ru --
require "sinatra"
run Sinatra::Application
`, []string{"manifest/duplicate Gemfile:4"}},
		{"gem path outside", `
-- Gemfile --
ruby "3.4.7"
gem "sinatra", "4.2.1"
gem "puma","7.1.0"
gem "stars", path: "../stars"
-- config.ru --
require "sinatra"
run Sinatra::Application
`, []string{"ship/outside Gemfile:4"}},
		{"gem require relative case", `
-- Gemfile --
ruby "3.4.7"
gem "sinatra", "4.2.1"
gem "puma","7.1.0"
-- config.ru --
require_relative "App"
run Gate
-- app.rb --
require "sinatra/base"
class Gate < Sinatra::Base
end
`, []string{"ship/case config.ru:1"}},
		{"gems.rb ok", `
-- gems.rb --
ruby "3.4.7"
gem "roda", "3.97.0"
gem "puma","7.1.0"
-- gems.locked --
GEM
  specs:
    puma (7.1.0)
    roda (3.97.0)

PLATFORMS
  ruby
-- config.ru --
require "roda"
run Class.new(Roda)
`, nil},
		{"cargo wildcard", `
-- Cargo.toml --
[package]
name="g"
version="0.1.0"
rust-version="1.80"
[dependencies]
axum = "*"
-- src/main.rs --
use axum::Router;
fn main(){ let _ = Router::<()>::new(); }
`, []string{"manifest/unpinned Cargo.toml:6"}},
		{"cargo rust-version over toolchain", `
-- Cargo.toml --
[package]
name="g"
version="0.1.0"
rust-version="1.88"
-- rust-toolchain.toml --
[toolchain]
channel = "1.85.0"
-- src/main.rs --
fn main(){}
`, []string{"pin/disagree rust-toolchain.toml:2"}},
		{"cargo feature optional ok", `
-- Cargo.toml --
[package]
name="g"
version="0.1.0"
rust-version="1.80"
[features]
x=["dep:tokio"]
[dependencies]
tokio = { version = "=1.48.0", optional = true }
[target.'cfg(unix)'.dependencies]
libc = "=0.2.177"
-- src/main.rs --
#[cfg(feature="x")]
use tokio::runtime::Runtime;
use libc::c_int;
extern crate alloc;
fn main(){ let _: c_int = 0; }
`, nil},
		{"cargo path outside", `
-- Cargo.toml --
[package]
name="g"
version="0.1.0"
rust-version="1.80"
[dependencies]
stars = { path = "../stars" }
-- src/main.rs --
fn main(){}
`, []string{"ship/outside Cargo.toml:6"}},
		{"elixir dup + missing lock", `
-- mix.exs --
defmodule H.MixProject do
  use Mix.Project
  def project, do: [app: :h, version: "0.1.0", elixir: "~> 1.17", deps: deps()]
  def application, do: [mod: {H, []}]
  defp deps do
    [
      {:bandit, "~> 1.8"}
    ]
  end
end
-- .tool-versions --
elixir 1.18.4-otp-27
erlang 27.3
`, []string{"manifest/lock-missing mix.exs:1"}},
		{"elixir lock too old", `
-- mix.exs --
defmodule H.MixProject do
  use Mix.Project
  def project, do: [app: :h, version: "0.1.0", elixir: "~> 1.17", deps: deps()]
  def application, do: [mod: {H, []}]
  defp deps do
    [{:bandit, "~> 1.8"}]
  end
end
-- mix.lock --
%{
  "bandit": {:hex, :bandit, "1.5.0", "a"},
}
-- .tool-versions --
elixir 1.18.4-otp-27
erlang 25.3
`, []string{"manifest/lock-stale mix.lock:2", "pin/end-of-life .tool-versions:2"}},
		{"umbrella ok", `
-- mix.exs --
defmodule H.MixProject do
  use Mix.Project
  def project, do: [apps_path: "apps", version: "0.1.0", deps: []]
end
-- apps/web/mix.exs --
defmodule W.MixProject do
  use Mix.Project
  def project, do: [app: :web, elixir: "~> 1.17", deps: deps()]
  defp deps, do: [{:phoenix, "~> 1.8"}, {:core, in_umbrella: true}]
end
-- apps/core/mix.exs --
defmodule C.MixProject do
  use Mix.Project
  def project, do: [app: :core, deps: []]
end
-- mix.lock --
%{
  "phoenix": {:hex, :phoenix, "1.8.1", "a"},
}
-- .tool-versions --
elixir 1.18.4-otp-27
`, nil},
		{"dotnet undeclared dapper", `
-- Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup>
  <ItemGroup><PackageReference Include="Npgsql" Version="10.0.0" /></ItemGroup>
</Project>
-- Program.cs --
using Dapper;
using Npgsql;
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
`, []string{"manifest/undeclared Program.cs:1"}},
		{"dotnet floating", `
-- Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup>
  <ItemGroup>
<PackageReference Include="Npgsql" Version="*" /></ItemGroup>
</Project>
-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
`, []string{"manifest/unpinned Api.csproj:4"}},
		{"dotnet ref outside", `
-- Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup>
  <ItemGroup>
<ProjectReference Include="..\Lib\Lib.csproj" /></ItemGroup>
</Project>
-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
`, []string{"ship/outside Api.csproj:4"}},
		{"dotnet broken xml", `
-- Api.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup>
-- Program.cs --
var a=1;
`, nil},
		{"deno lock stale none", `
-- deno.json --
{"tasks":{"start":"deno run -A main.ts"},"imports":{"hono":"npm:hono@^4"}}
-- main.ts --
import { Hono } from "hono";
Deno.serve(new Hono().fetch);
`, []string{"pin/missing deno.json:1"}},
		{"static site ok", `
-- index.html --
<h1>x</h1>
-- about.html --
<p>y
-- img/a.svg --
<svg/>
`, nil},
		{"bun docker ok", `
-- package.json --
{"name":"g","dependencies":{"hono":"4.10.4"}}
-- index.ts --
import { Hono } from "hono";
export default { port: process.env.PORT ?? 3000, fetch: new Hono().fetch };
-- bun.lock --
{"lockfileVersion":1,"packages":{"hono":["hono@4.10.4","",{},""]}}
-- Dockerfile --
FROM oven/bun:1.3-slim
WORKDIR /a
COPY . .
RUN bun install --frozen-lockfile
EXPOSE 3000
CMD ["bun","run","index.ts"]
`, nil},
		{"wf quoted 3.10 ok & ended", `
-- .python-version --
3.10
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
-- .ci/build.yml --
steps:
  - run: x
    python-version: "3.10"
`, []string{"pin/end-of-life .python-version:1"}},
		{"large ok small", `
-- package.json --
{"name":"a","engines":{"node":"24.x"},"scripts":{"start":"node s.js"},"dependencies":{"koa":"3.1.1"}}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- m.bin --
xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx
-- .git --
`, nil},
		{"gitattributes eol", `
-- .gitattributes --
*.sh eol=crlf
-- package.json --
{"name":"a","engines":{"node":"24.x"},"dependencies":{"koa":"3.1.1"}}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- Procfile --
web: sh run.sh
-- run.sh --
exec node s.js
-- .git --
`, []string{"ship/line-endings run.sh:1"}},
		{"django case app", `
-- requirements.txt --
django==5.2.8
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn Hill.wsgi
-- manage.py --
import os
os.environ.setdefault("DJANGO_SETTINGS_MODULE","hill.settings")
-- hill/__init__.py --
-- hill/wsgi.py --
from django.core.wsgi import get_wsgi_application
application=get_wsgi_application()
-- hill/settings.py --
import os
DEBUG=False
ALLOWED_HOSTS=["h.test"]
SECRET_KEY=os.environ["K"]
-- .git --
`, []string{"ship/case Procfile:1"}},
	})
}

func TestSoundTreesThatLookTroubled(t *testing.T) {
	t.Parallel()
	placed(t, []ruleCase{
		{"comment mentions FROM latest", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- Dockerfile --
# FROM node:latest
FROM node:24.11.1-slim
WORKDIR /a
COPY . .
RUN npm install --omit=dev
EXPOSE 3000
CMD ["node","s.js"]
`, nil},
		{"digest base", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- Dockerfile --
FROM node:24-slim@sha256:0123456789012345678901234567890123456789012345678901234567890123
WORKDIR /a
COPY . .
RUN npm install --omit=dev
EXPOSE 3000
CMD ["node","s.js"]
`, nil},
		{"engines range with or", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "^22.12.0 || ^24.0.0"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"nvmrc v22 engines range", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": ">=22"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- .nvmrc --
v24.11.1
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"build-only python in node tree", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- scripts/gen.py --
import requests
`, nil},
		{"requirements in docs folder", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- docs/requirements.txt --
mkdocs
`, nil},
		{"examples folder with own manifests", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- examples/a/package.json --
{"name":"x","scripts":{"start":"vite"},"dependencies":{"vite":"*"}}
`, nil},
		{"two locks of one manager", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- bun.lock --
{"lockfileVersion":1,"packages":{"koa":["koa@3.1.1"]}}
-- bun.lockb --
x
`, nil},
		{"lock with git dep", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1",
  "sky": "git+https://git.test/sky.git#v1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- package-lock.json --
{"lockfileVersion":3,"packages":{"node_modules/koa":{"version":"3.1.1"},"node_modules/sky":{"version":"1.0.0","resolved":"git+ssh://x"}}}
`, nil},
		{"peer and types", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 },
 "devDependencies": {
  "@types/koa": "^2.15.0"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- package-lock.json --
{"lockfileVersion":3,"packages":{"node_modules/koa":{"version":"3.1.1"},"node_modules/@types/koa":{"version":"2.15.0","dev":true}}}
`, nil},
		{"type import dev", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "build": "tsc",
  "start": "node dist/s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 },
 "devDependencies": {
  "typescript": "5.9.3",
  "@types/express": "5.0.5"
 }
}
-- tsconfig.json --
{"compilerOptions":{"outDir":"dist","rootDir":"src"}}
-- src/s.ts --
import type { Request } from "express";
import Koa from "koa";
let r: Request | undefined;
new Koa().listen(Number(process.env.PORT) || 3000);
`, nil},
		{"python marker pin duplicates", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
numpy==2.2.0; python_version<"3.13"
numpy==2.3.4; python_version>="3.13"
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
import numpy
app=Flask(__name__)
`, nil},
		{"python tests folder imports", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
-- tests/test_a.py --
import pytest, requests
`, nil},
		{"setup.py package editable", `
-- requirements.txt --
-e .
gunicorn==23.0.0
-- setup.py --
from setuptools import setup
setup(name="hill", install_requires=["flask==3.1.2"])
-- .python-version --
3.13
-- Procfile --
web: gunicorn hill:app
-- hill/__init__.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"pipfile star with lock", `
-- Pipfile --
[packages]
flask="*"
gunicorn="*"
[requires]
python_version="3.13"
-- Pipfile.lock --
{"default":{"flask":{"version":"==3.1.2"},"gunicorn":{"version":"==23.0.0"}},"develop":{}}
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"poetry group not dev", `
-- pyproject.toml --
[tool.poetry]
name="a"
[tool.poetry.dependencies]
python=">=3.12,<3.15"
flask="^3.1"
[tool.poetry.group.web.dependencies]
gunicorn="^23.0"
-- poetry.lock --
[[package]]
name = "flask"
version = "3.1.2"
groups = ["main"]
[[package]]
name = "gunicorn"
version = "23.0.0"
groups = ["web"]
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app=Flask(__name__)
`, nil},
		{"ruby platforms optional gem", `
-- Gemfile --
ruby "3.4.7"
gem "sinatra", "~> 4.2"
gem "puma", "~> 7.1"
gem "tzinfo-data", platforms: %i[windows jruby]
-- Gemfile.lock --
GEM
  specs:
    puma (7.1.0)
    sinatra (4.2.1)

PLATFORMS
  x86_64-linux
  arm64-darwin-24

DEPENDENCIES
  puma (~> 7.1)
  sinatra (~> 4.2)
  tzinfo-data
-- config.ru --
require "sinatra"
run Sinatra::Application
`, nil},
		{"composer replace + ext", `
-- composer.json --
{"require":{"php":"^8.3","ext-mbstring":"*","slim/slim":"^4.0","psr/log":"^3.0 || ^2.0"}}
-- composer.lock --
{"packages":[{"name":"psr/log","version":"3.0.2"},{"name":"slim/slim","version":"4.15.1"}],"packages-dev":[]}
-- public/index.php --
<?php
use Slim\Factory\AppFactory;
use Psr\Log\LoggerInterface;
`, nil},
		{"go indirect only gomod hash", `-- go.mod --
module h.test/g

go 1.25.0

require github.com/gorilla/mux v1.8.1

require golang.org/x/sys v0.38.0 // indirect
-- go.sum --
github.com/gorilla/mux v1.8.1 h1:a=
github.com/gorilla/mux v1.8.1/go.mod h1:b=
golang.org/x/sys v0.38.0/go.mod h1:c=
-- main.go --
package main

import "github.com/gorilla/mux"

func main() { mux.NewRouter() }
`, nil},
		{"go vendor", `-- go.mod --
module h.test/g

go 1.25.0

require github.com/gorilla/mux v1.8.1
-- go.sum --
github.com/gorilla/mux v1.8.1 h1:a=
-- vendor/modules.txt --
-- vendor/github.com/gorilla/mux/mux.go --
package mux
-- main.go --
package main

import "github.com/gorilla/mux"

func main() { mux.NewRouter() }
`, nil},
		{"go pseudo version", `-- go.mod --
module h.test/g

go 1.25.0

require golang.org/x/exp v0.0.0-20251023183803-a4bb9ffd2546
-- go.sum --
golang.org/x/exp v0.0.0-20251023183803-a4bb9ffd2546 h1:a=
golang.org/x/exp v0.0.0-20251023183803-a4bb9ffd2546/go.mod h1:b=
-- main.go --
package main

import "golang.org/x/exp/maps"

func main() { _ = maps.Keys[map[int]int] }
`, nil},
		{"cargo workspace dev crate + build", `
-- Cargo.toml --
[workspace]
members=["app"]
resolver="2"
-- app/Cargo.toml --
[package]
name="app"
version="0.1.0"
rust-version="1.80"
[dependencies]
serde = { version = "1", features=["derive"] }
[build-dependencies]
cc = "1"
[dev-dependencies]
tempfile = "3"
-- app/src/main.rs --
use serde::Serialize;
#[derive(Serialize)]
struct A;
#[cfg(test)]
mod tests {
    use super::*;
    use tempfile::tempdir;
}
fn main(){}
-- Cargo.lock --
version = 4
[[package]]
name = "serde"
version = "1.0.228"
[[package]]
name = "cc"
version = "1.2.45"
[[package]]
name = "tempfile"
version = "3.23.0"
`, nil},
		{"dotnet two projects lib+web", `
-- global.json --
{"sdk":{"version":"10.0.100"}}
-- Lib/Lib.csproj --
<Project Sdk="Microsoft.NET.Sdk"><PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup></Project>
-- Lib/A.cs --
namespace Lib; public class A {}
-- Web/Web.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup><ItemGroup><ProjectReference Include="..\Lib\Lib.csproj" /></ItemGroup></Project>
-- Web/Program.cs --
using Lib;
using Dapper;
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
`, nil},
		{"ignored build output ok", `
-- .gitignore --
dist/
node_modules/
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "build": "tsc",
  "start": "node dist/s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 },
 "devDependencies": {
  "typescript": "5.9.3"
 }
}
-- tsconfig.json --
{"compilerOptions":{"outDir":"dist","rootDir":"src"}}
-- src/s.ts --
import Koa from "koa";
new Koa().listen(Number(process.env.PORT) || 3000);
-- dist/s.js --
require("koa")
-- .git --
`, nil},
		{"dockerignore keeps needed", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
-- .dockerignore --
*
!package.json
!*.js
**/node_modules
-- Dockerfile --
FROM node:24-slim
WORKDIR /a
COPY package.json s.js ./
RUN npm install --omit=dev
EXPOSE 3000
CMD ["node","s.js"]
`, nil},
		{"home path in comment and url", `
-- package.json --
{
 "name": "a",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- s.js --
// /Users/mira/code/x.js
const u="https://hill.test/Users/mira/pics/a.png";
const r="/home/index.html";
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"monorepo frontend builds in docker only", `
-- web/package.json --
{
 "name": "web",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "build": "vite build"
 },
 "dependencies": {},
 "devDependencies": {
  "vite": "7.2.2"
 }
}
-- web/index.html --
<script type=module src=/src/m.js></script>
-- web/src/m.js --
1
-- api/package.json --
{
 "name": "api",
 "engines": {
  "node": "24.x"
 },
 "scripts": {
  "start": "node s.js"
 },
 "dependencies": {
  "koa": "3.1.1"
 }
}
-- api/s.js --
const K=require("koa");new K().listen(process.env.PORT||3000)
`, nil},
		{"gradle wrapper old java target ok", `
-- build.gradle --
plugins { id 'java'; id 'org.springframework.boot' version '4.0.0' }
sourceCompatibility = '17'
-- settings.gradle --
rootProject.name='g'
-- src/main/java/G.java --
class G { public static void main(String[] a){} }
-- Dockerfile --
FROM gradle:8.14-jdk21 AS b
COPY . .
RUN gradle bootJar
FROM eclipse-temurin:21-jre
COPY --from=b build/libs/g.jar /g.jar
CMD ["java","-jar","/g.jar"]
`, nil},
	})
}
