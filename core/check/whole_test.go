package check_test

import (
	"strings"
	"testing"
)

// wholes are applications as they are usually laid out; nothing is wrong with how
// they start, listen and read their environment.
var wholes = []struct{ name, tree string }{
	{"Django with settings in parts", `-- requirements.txt --
Django==5.2.8
gunicorn==23.0.0
dj-database-url==3.0.1
whitenoise==6.11.0
psycopg[binary]==3.2.12
django-environ==0.12.0
-- runtime.txt --
python-3.13.9
-- Procfile --
release: python manage.py migrate --noinput
web: gunicorn observatory.wsgi:application --bind 0.0.0.0:$PORT --workers 2 --log-file -
-- .env.example --
SECRET_KEY=
DATABASE_URL=
ALLOWED_HOSTS=
-- manage.py --
#!/usr/bin/env python
import os, sys
def main():
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "observatory.settings.development")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)
if __name__ == "__main__":
    main()
-- observatory/__init__.py --
-- observatory/settings/__init__.py --
-- observatory/settings/base.py --
import environ
from pathlib import Path
env = environ.Env(DEBUG=(bool, False))
BASE_DIR = Path(__file__).resolve().parent.parent.parent
SECRET_KEY = env("SECRET_KEY")
INSTALLED_APPS = ["django.contrib.staticfiles"]
MIDDLEWARE = ["django.middleware.security.SecurityMiddleware", "whitenoise.middleware.WhiteNoiseMiddleware"]
ROOT_URLCONF = "observatory.urls"
STATIC_URL = "static/"
STATIC_ROOT = BASE_DIR / "staticfiles"
DATABASES = {"default": env.db()}
-- observatory/settings/production.py --
from .base import *
DEBUG = False
ALLOWED_HOSTS = env.list("ALLOWED_HOSTS")
-- observatory/settings/development.py --
from .base import *
DEBUG = True
ALLOWED_HOSTS = ["*"]
-- observatory/urls.py --
urlpatterns = []
-- observatory/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "observatory.settings.production")
application = get_wsgi_application()
`},
	{"FastAPI with a class of settings", `-- pyproject.toml --
[project]
name = "forecast"
version = "0.1.0"
requires-python = ">=3.12,<3.14"
dependencies = ["fastapi==0.121.0", "uvicorn[standard]==0.38.0", "pydantic-settings==2.11.0"]
-- Procfile --
web: uvicorn forecast.main:app --host 0.0.0.0 --port ${PORT:-8000}
-- .env.example --
FORECAST_API_KEY=
FORECAST_DATABASE_URL=
-- forecast/__init__.py --
-- forecast/config.py --
from functools import lru_cache
from pydantic_settings import BaseSettings, SettingsConfigDict
class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="FORECAST_", env_file=".env")
    api_key: str
    database_url: str
    timeout: int = 5
@lru_cache
def settings() -> Settings:
    return Settings()
-- forecast/main.py --
from contextlib import asynccontextmanager
from fastapi import FastAPI, Depends
from .config import Settings, settings
@asynccontextmanager
async def lifespan(app):
    yield
app = FastAPI(lifespan=lifespan)
@app.get("/")
async def root(s: Settings = Depends(settings)):
    return {"timeout": s.timeout}
`},
	{"Rails", `-- Gemfile --
source "https://rubygems.org"
ruby "3.4.7"
gem "rails", "8.1.0"
gem "puma", "7.1.0"
gem "pg", "1.6.2"
gem "bootsnap", "1.18.6", require: false
group :development, :test do
  gem "debug", "1.11.0"
end
-- .ruby-version --
3.4.7
-- Procfile --
web: bundle exec puma -C config/puma.rb
release: bin/rails db:migrate
-- config.ru --
require_relative "config/environment"
run Rails.application
Rails.application.load_server
-- config/puma.rb --
threads_count = ENV.fetch("RAILS_MAX_THREADS", 3)
threads threads_count, threads_count
port ENV.fetch("PORT", 3000)
plugin :tmp_restart
pidfile ENV["PIDFILE"] if ENV["PIDFILE"]
-- config/environment.rb --
require_relative "application"
Rails.application.initialize!
-- config/boot.rb --
ENV["BUNDLE_GEMFILE"] ||= File.expand_path("../Gemfile", __dir__)
require "bundler/setup"
require "bootsnap/setup"
-- config/application.rb --
require_relative "boot"
require "rails/all"
Bundler.require(*Rails.groups)
module Bookings
  class Application < Rails::Application
    config.load_defaults 8.1
  end
end
-- config/routes.rb --
Rails.application.routes.draw do
  get "up" => "rails/health#show", as: :rails_health_check
  root "nights#index"
end
-- bin/rails+x --
#!/usr/bin/env ruby
APP_PATH = File.expand_path("../config/application", __dir__)
require_relative "../config/boot"
require "rails/commands"
-- config/environments/production.rb --
require "active_support/core_ext/integer/time"
Rails.application.configure do
  config.eager_load = true
  config.log_level = ENV.fetch("RAILS_LOG_LEVEL", "info")
  config.action_mailer.default_url_options = { host: ENV.fetch("HOSTNAME_PUBLIC", "x.example") }
end
`},
	{"Laravel in an image", `-- composer.json --
{"require":{"php":"^8.4","laravel/framework":"^12.0"}}
-- artisan --
#!/usr/bin/env php
<?php
require __DIR__."/vendor/autoload.php";
-- .env.example --
APP_NAME=Dome
APP_KEY=
APP_ENV=local
APP_DEBUG=true
DB_CONNECTION=pgsql
DB_HOST=127.0.0.1
-- config/app.php --
<?php
return ["name" => env("APP_NAME", "Dome"), "key" => env("APP_KEY"), "env" => env("APP_ENV", "production"), "debug" => (bool) env("APP_DEBUG", false)];
-- config/database.php --
<?php
return ["default" => env("DB_CONNECTION", "sqlite"), "connections" => ["pgsql" => ["host" => env("DB_HOST", "127.0.0.1")]]];
-- public/index.php --
<?php
require __DIR__."/../vendor/autoload.php";
-- Dockerfile --
FROM php:8.4-apache
ENV PORT=8080
RUN sed -i "s/Listen 80/Listen ${PORT}/" /etc/apache2/ports.conf
COPY . /var/www/html
`},
	{"Spring Boot in an image", `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion>
<parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>3.5.7</version></parent>
<groupId>g</groupId><artifactId>catalog</artifactId><version>1.0.0</version>
<properties><java.version>21</java.version></properties>
<dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
<build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/g/App.java --
package g;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
@SpringBootApplication
public class App { public static void main(String[] a) { SpringApplication.run(App.class, a); } }
-- src/main/resources/application.yml --
server:
  port: ${PORT:8080}
  address: 0.0.0.0
spring:
  datasource:
    url: ${JDBC_DATABASE_URL}
-- .env.example --
JDBC_DATABASE_URL=
-- Dockerfile --
FROM maven:3.9-eclipse-temurin-21 AS build
WORKDIR /src
COPY pom.xml .
COPY src src
RUN mvn -q package
FROM eclipse-temurin:21-jre
COPY --from=build /src/target/catalog-1.0.0.jar /app.jar
EXPOSE 8080
ENTRYPOINT ["java", "-jar", "/app.jar"]
`},
	{"Go with its program in cmd", `-- go.mod --
module observatory.example/gate

go 1.25.4

require github.com/go-chi/chi/v5 v5.2.3
-- go.sum --
github.com/go-chi/chi/v5 v5.2.3 h1:WQIt9uxdsAbgIYgid+BpYc+liqQZGMHRaUwp0JUcvdE=
github.com/go-chi/chi/v5 v5.2.3/go.mod h1:L2yAIGWB3H+phAw1NxKwWM+7eUH/lU8pOMm5hHcoops=
-- cmd/gate/main.go --
package main

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"os"
	"os/signal"
	"syscall"
	"time"

	"observatory.example/gate/internal/config"
	"observatory.example/gate/internal/web"
)

func main() {
	if err := run(); err != nil {
		slog.Error("gate", "err", err)
		os.Exit(1)
	}
}

func run() error {
	cfg, err := config.Load(os.Getenv)
	if err != nil {
		return err
	}
	srv := &http.Server{Addr: cfg.Addr(), Handler: web.New(), ReadHeaderTimeout: 5 * time.Second}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	go func() {
		<-ctx.Done()
		srv.Shutdown(context.Background())
	}()
	if err := srv.ListenAndServe(); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}
-- internal/config/config.go --
package config

import (
	"fmt"
	"strconv"
)

type Config struct {
	Host string
	Port int
}

func Load(getenv func(string) string) (Config, error) {
	c := Config{Host: getenv("HOST"), Port: 8080}
	if p := getenv("PORT"); p != "" {
		n, err := strconv.Atoi(p)
		if err != nil {
			return c, fmt.Errorf("PORT: %w", err)
		}
		c.Port = n
	}
	return c, nil
}

func (c Config) Addr() string { return fmt.Sprintf("%s:%d", c.Host, c.Port) }
-- internal/web/web.go --
package web

import (
	"net/http"

	"github.com/go-chi/chi/v5"
)

func New() http.Handler {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, r *http.Request) { w.Write([]byte("clear")) })
	return r
}
-- Dockerfile --
FROM golang:1.25.4 AS build
WORKDIR /src
COPY go.mod go.sum ./
RUN go mod download
COPY . .
RUN CGO_ENABLED=0 go build -o /gate ./cmd/gate
FROM scratch
COPY --from=build /gate /gate
EXPOSE 8080
ENTRYPOINT ["/gate"]
-- Procfile --
web: bin/gate
`},
	{"a release of Phoenix", `-- mix.exs --
defmodule Catalog.MixProject do
  use Mix.Project
  def project, do: [app: :catalog, version: "0.1.0", elixir: "~> 1.18", deps: deps()]
  def application, do: [mod: {Catalog.Application, []}, extra_applications: [:logger]]
  defp deps, do: [{:phoenix, "~> 1.8.1"}, {:bandit, "~> 1.8"}]
end
-- mix.lock --
%{
  "bandit": {:hex, :bandit, "1.8.0", "a", [:mix], [], "hexpm", "b"},
  "phoenix": {:hex, :phoenix, "1.8.1", "a", [:mix], [], "hexpm", "b"},
}
-- lib/catalog/application.ex --
defmodule Catalog.Application do
  use Application
  @impl true
  def start(_type, _args) do
    Supervisor.start_link([CatalogWeb.Endpoint], strategy: :one_for_one, name: Catalog.Supervisor)
  end
end
-- lib/catalog_web/endpoint.ex --
defmodule CatalogWeb.Endpoint do
  use Phoenix.Endpoint, otp_app: :catalog
  plug CatalogWeb.Router
end
-- config/config.exs --
import Config
config :catalog, CatalogWeb.Endpoint, url: [host: "localhost"], adapter: Bandit.PhoenixAdapter
import_config "#{config_env()}.exs"
-- config/dev.exs --
import Config
config :catalog, CatalogWeb.Endpoint, http: [ip: {127, 0, 0, 1}, port: 4000]
-- config/prod.exs --
import Config
config :logger, level: :info
-- config/runtime.exs --
import Config
if System.get_env("PHX_SERVER"), do: config(:catalog, CatalogWeb.Endpoint, server: true)
if config_env() == :prod do
  secret = System.get_env("SECRET_KEY_BASE") || raise "SECRET_KEY_BASE is missing"
  config :catalog, CatalogWeb.Endpoint,
    http: [ip: {0, 0, 0, 0, 0, 0, 0, 0}, port: String.to_integer(System.get_env("PORT") || "4000")],
    secret_key_base: secret
end
-- .env.example --
SECRET_KEY_BASE=
-- Dockerfile --
FROM elixir:1.18.4-slim AS build
ENV MIX_ENV=prod
WORKDIR /app
COPY mix.exs mix.lock ./
RUN mix local.hex --force && mix deps.get --only prod
COPY config config
COPY lib lib
RUN mix release
FROM debian:12-slim
WORKDIR /app
ENV PHX_SERVER=true
COPY --from=build /app/_build/prod/rel/catalog ./
EXPOSE 4000
CMD ["bin/catalog", "start"]
`},
	{"Next.js, standalone", `-- package.json --
{"name":"visitors","engines":{"node":"24.x"},"scripts":{"dev":"next dev","build":"next build","start":"next start"},"dependencies":{"next":"16.0.1","react":"19.2.0","react-dom":"19.2.0"}}
-- next.config.mjs --
export default { output: "standalone" };
-- app/page.jsx --
export default function Page() { return <p>clear</p>; }
-- app/layout.jsx --
export default function Layout({ children }) { return <html><body>{children}</body></html>; }
-- Dockerfile --
FROM node:24-slim AS build
WORKDIR /app
COPY package.json ./
RUN npm install
COPY . .
RUN npm run build
FROM node:24-slim
WORKDIR /app
ENV NODE_ENV=production
COPY --from=build /app/.next/standalone ./
COPY --from=build /app/.next/static ./.next/static
EXPOSE 3000
ENV PORT=3000 HOSTNAME=0.0.0.0
CMD ["node", "server.js"]
`},
	{"Nest with its configuration", `-- package.json --
{"name":"bookings","engines":{"node":"24.x"},"scripts":{"build":"nest build","start":"nest start","start:dev":"nest start --watch","start:prod":"node dist/main"},"dependencies":{"@nestjs/common":"11.1.0","@nestjs/core":"11.1.0","@nestjs/platform-express":"11.1.0","@nestjs/config":"4.0.2","reflect-metadata":"0.2.2","rxjs":"7.8.2"},"devDependencies":{"@nestjs/cli":"11.0.0","typescript":"5.9.3"}}
-- Procfile --
web: node dist/main
-- nest-cli.json --
{"sourceRoot":"src"}
-- tsconfig.json --
{"compilerOptions":{"outDir":"./dist","module":"commonjs","target":"ES2023","experimentalDecorators":true}}
-- src/main.ts --
import { NestFactory } from '@nestjs/core';
import { ConfigService } from '@nestjs/config';
import { AppModule } from './app.module';
async function bootstrap() {
  const app = await NestFactory.create(AppModule);
  const config = app.get(ConfigService);
  await app.listen(config.get<number>('PORT', 3000));
}
bootstrap();
-- src/app.module.ts --
import { Module } from '@nestjs/common';
import { ConfigModule } from '@nestjs/config';
@Module({ imports: [ConfigModule.forRoot({ isGlobal: true })] })
export class AppModule {}
`},
	{"Elysia", `-- package.json --
{"name":"ticker","scripts":{"start":"bun run src/index.ts"},"dependencies":{"elysia":"1.4.0"},"packageManager":"bun@1.3.0"}
-- bun.lock --
{"lockfileVersion":1,"workspaces":{"":{"name":"ticker","dependencies":{"elysia":"1.4.0"}}},"packages":{"elysia":["elysia@1.4.0","",{},"sha512-x"]}}
-- src/index.ts --
import { Elysia } from "elysia";
const app = new Elysia().get("/", () => "clear").listen(Bun.env.PORT ?? 3000);
console.log(app.server?.port);
`},
	{"Quarkus", `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>sky</artifactId><version>1</version>
<properties><maven.compiler.release>21</maven.compiler.release><quarkus.platform.version>3.28.0</quarkus.platform.version></properties>
<dependencies><dependency><groupId>io.quarkus</groupId><artifactId>quarkus-rest</artifactId><version>3.28.0</version></dependency></dependencies>
<build><plugins><plugin><groupId>io.quarkus.platform</groupId><artifactId>quarkus-maven-plugin</artifactId><version>3.28.0</version><executions><execution><goals><goal>build</goal></goals></execution></executions></plugin></plugins></build></project>
-- src/main/java/g/R.java --
package g;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
@Path("/")
public class R { @GET public String get() { return "clear"; } }
-- src/main/resources/application.properties --
quarkus.http.port=${PORT:8080}
quarkus.http.host=0.0.0.0
-- Procfile --
web: java -jar target/quarkus-app/quarkus-run.jar
`},
	{"a factory of Flask and a file for gunicorn", `-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn -c gunicorn.conf.py 'star:create_app()'
-- gunicorn.conf.py --
import multiprocessing
import os
bind = f"0.0.0.0:{os.environ.get('PORT', '8000')}"
workers = int(os.environ.get("WEB_CONCURRENCY", multiprocessing.cpu_count()))
-- star/__init__.py --
import os
from flask import Flask
def create_app(test_config=None):
    app = Flask(__name__, instance_relative_config=True)
    app.config.from_mapping(SECRET_KEY=os.environ["SECRET_KEY"])
    if test_config is not None:
        app.config.update(test_config)
    from . import pages
    app.register_blueprint(pages.bp)
    return app
-- star/pages.py --
from flask import Blueprint
bp = Blueprint("pages", __name__)
@bp.get("/")
def index():
    return "clear"
-- .env.example --
SECRET_KEY=
-- tests/test_app.py --
import os
os.environ.setdefault("SECRET_KEY", "test")
from star import create_app
`},
	{"Express in TypeScript with a schema", "-- package.json --\n{\"name\":\"gate\",\"type\":\"module\",\"engines\":{\"node\":\"24.x\"},\"scripts\":{\"dev\":\"tsx watch src/server.ts\",\"build\":\"tsc -p .\",\"start\":\"node dist/server.js\",\"test\":\"vitest\"},\"dependencies\":{\"express\":\"5.1.0\",\"zod\":\"4.1.0\"},\"devDependencies\":{\"tsx\":\"4.20.0\",\"typescript\":\"5.9.3\",\"vitest\":\"4.0.0\"}}\n-- tsconfig.json --\n{\"compilerOptions\":{\"outDir\":\"dist\",\"rootDir\":\"src\",\"module\":\"NodeNext\",\"target\":\"ES2023\"}}\n-- Procfile --\nweb: npm start\n-- src/env.ts --\nimport { z } from \"zod\";\nconst schema = z.object({ PORT: z.coerce.number().default(3000), HOST: z.string().default(\"0.0.0.0\"), API_TOKEN: z.string() });\nexport const env = schema.parse(process.env);\n-- src/server.ts --\nimport express from \"express\";\nimport { env } from \"./env.js\";\nconst app = express();\napp.get(\"/\", (_req, res) => { res.send(\"clear\"); });\napp.listen(env.PORT, env.HOST, () => console.log(`up on ${env.PORT}`));\n-- .env.example --\nPORT=3000\nAPI_TOKEN=\n"},
	{"Ktor in code", `-- build.gradle.kts --
plugins {
    kotlin("jvm") version "2.2.20"
    id("io.ktor.plugin") version "3.3.0"
}
application { mainClass.set("sky.ApplicationKt") }
kotlin { jvmToolchain(21) }
dependencies { implementation("io.ktor:ktor-server-netty:3.3.0") }
-- settings.gradle.kts --
rootProject.name = "sky"
-- src/main/kotlin/sky/Application.kt --
package sky
import io.ktor.server.engine.embeddedServer
import io.ktor.server.netty.Netty
import io.ktor.server.routing.*
import io.ktor.server.response.*
fun main() {
    val port = System.getenv("PORT")?.toIntOrNull() ?: 8080
    embeddedServer(Netty, port = port, host = "0.0.0.0") {
        routing { get("/") { call.respondText("clear") } }
    }.start(wait = true)
}
-- Procfile --
web: java -jar build/libs/sky-all.jar
`},
	{"Axum with a module of settings", `-- Cargo.toml --
[package]
name = "starmap"
version = "0.1.0"
edition = "2024"
rust-version = "1.85"
[dependencies]
axum = "0.8"
tokio = { version = "1", features = ["full"] }
-- Cargo.lock --
version = 4
-- src/main.rs --
mod config;
use axum::{Router, routing::get};
use config::Config;
#[tokio::main]
async fn main() -> Result<(), Box<dyn std::error::Error>> {
    let config = Config::load()?;
    let app = Router::new().route("/", get(|| async { "clear" }));
    let listener = tokio::net::TcpListener::bind((config.host.as_str(), config.port)).await?;
    axum::serve(listener, app).with_graceful_shutdown(shutdown()).await?;
    Ok(())
}
async fn shutdown() { tokio::signal::ctrl_c().await.ok(); }
-- src/config.rs --
use std::env;
pub struct Config { pub host: String, pub port: u16 }
impl Config {
    pub fn load() -> Result<Self, std::num::ParseIntError> {
        Ok(Self {
            host: env::var("HOST").unwrap_or_else(|_| "0.0.0.0".to_string()),
            port: env::var("PORT").unwrap_or_else(|_| "8080".to_string()).parse()?,
        })
    }
}
-- Procfile --
web: ./target/release/starmap
`},
	{"Streamlit", `-- requirements.txt --
streamlit==1.51.0
-- .python-version --
3.13
-- Procfile --
web: streamlit run app.py --server.port $PORT --server.address 0.0.0.0
-- app.py --
import streamlit as st
st.title("Clear")
`},
	{"a workspace", `-- package.json --
{"name":"observatory","private":true,"engines":{"node":"24.x"},"workspaces":["apps/*","packages/*"],"scripts":{"build":"npm run build -w apps/api","start":"npm start -w apps/api"}}
-- apps/api/package.json --
{"name":"api","main":"src/index.js","scripts":{"build":"echo ok","start":"node src/index.js"},"dependencies":{"fastify":"5.6.0","@obs/config":"*"}}
-- apps/api/src/index.js --
const fastify = require('fastify')();
const { port, host } = require('@obs/config');
fastify.get('/', async () => 'clear');
fastify.listen({ port, host });
-- packages/config/package.json --
{"name":"@obs/config","version":"1.0.0","main":"index.js"}
-- packages/config/index.js --
module.exports = { port: Number(process.env.PORT) || 3000, host: process.env.HOST || '0.0.0.0' };
`},
	// Conditions of the calls that lead to a server, and what is there sometimes.
	{"a key that must be set, asked for in main", `-- package.json --
{"name":"dome","version":"1.0.0","private":true,"engines":{"node":"24.x"},"scripts":{"start":"node index.js"},"dependencies":{}}
-- package-lock.json --
{"name":"dome","version":"1.0.0","lockfileVersion":3,"requires":true,"packages":{"":{"name":"dome","version":"1.0.0"}}}
-- .env.example --
STAR_KEY=
-- index.js --
const { start } = require("./server");
function main() {
  if (!process.env.STAR_KEY) {
    console.error("STAR_KEY is not set");
    process.exit(1);
  }
  start(process.env.STAR_KEY);
}
main();
-- server.js --
const http = require("http");
exports.start = (key) => http.createServer((q, r) => r.end(key)).listen(process.env.PORT || 3000);
`},
	{"one of two roles", `-- package.json --
{"name":"dome","version":"1.0.0","private":true,"engines":{"node":"24.x"},"scripts":{"start":"node index.js"},"dependencies":{}}
-- package-lock.json --
{"name":"dome","version":"1.0.0","lockfileVersion":3,"requires":true,"packages":{"":{"name":"dome","version":"1.0.0"}}}
-- Procfile --
web: node index.js
worker: ROLE=worker node index.js
-- index.js --
function web() { require("http").createServer((q, r) => r.end("x")).listen(process.env.PORT || 3000); }
function worker() { setInterval(() => {}, 1000); }
const roles = { web, worker };
roles[process.env.ROLE || "web"]();
`},
	{"no server in tests", `-- package.json --
{"name":"dome","version":"1.0.0","private":true,"engines":{"node":"24.x"},"scripts":{"start":"node index.js"},"dependencies":{}}
-- package-lock.json --
{"name":"dome","version":"1.0.0","lockfileVersion":3,"requires":true,"packages":{"":{"name":"dome","version":"1.0.0"}}}
-- index.js --
const http = require("http");
const server = http.createServer((q, r) => r.end("x"));
function start() { server.listen(process.env.PORT || 3000); }
if (process.env.NODE_ENV !== "test") start();
module.exports = server;
`},
	{"processes of a cluster", `-- package.json --
{"name":"dome","version":"1.0.0","private":true,"engines":{"node":"24.x"},"scripts":{"start":"node index.js"},"dependencies":{}}
-- package-lock.json --
{"name":"dome","version":"1.0.0","lockfileVersion":3,"requires":true,"packages":{"":{"name":"dome","version":"1.0.0"}}}
-- index.js --
const cluster = require("cluster");
const { serve } = require("./serve");
if (cluster.isPrimary) {
  for (let i = 0; i < 2; i++) cluster.fork();
} else {
  serve();
}
-- serve.js --
exports.serve = () => require("http").createServer((q, r) => r.end("x")).listen(process.env.PORT || 3000);
`},
	{"a public server and one for the administrator, in a loop", `-- package.json --
{"name":"dome","version":"1.0.0","private":true,"engines":{"node":"24.x"},"scripts":{"start":"node index.js"},"dependencies":{}}
-- package-lock.json --
{"name":"dome","version":"1.0.0","lockfileVersion":3,"requires":true,"packages":{"":{"name":"dome","version":"1.0.0"}}}
-- index.js --
const http = require("http");
const services = [{ port: process.env.PORT || 3000, host: "0.0.0.0" }, { port: 9402, host: "127.0.0.1" }];
for (const { port, host } of services) http.createServer((q, r) => r.end("x")).listen(port, host);
`},
	{"a command that gives its exit code", `-- requirements.txt --
waitress==3.0.2
-- .python-version --
3.13
-- Procfile --
web: python app.py
-- .env.example --
STAR_KEY=
-- app.py --
import os
import sys

from waitress import serve


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]


def run():
    serve(app, host="0.0.0.0", port=int(os.environ.get("PORT", 8000)))


def main():
    if "STAR_KEY" not in os.environ:
        print("STAR_KEY is missing", file=sys.stderr)
        return 1
    run()
    return 0


if __name__ == "__main__":
    sys.exit(main())
`},
	{"a table of commands", `-- requirements.txt --
waitress==3.0.2
-- .python-version --
3.13
-- Procfile --
web: python app.py web
-- app.py --
import os
import sys

from waitress import serve


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]


def web():
    serve(app, host="0.0.0.0", port=int(os.environ.get("PORT", 8000)))


def migrate():
    pass


COMMANDS = {"web": web, "migrate": migrate}
COMMANDS[sys.argv[1]]()
`},
	{"an argument that is there sometimes", `-- requirements.txt --
waitress==3.0.2
-- .python-version --
3.13
-- Procfile --
web: python app.py
-- app.py --
import os

from waitress import serve


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]


options = {"host": "0.0.0.0"}
if os.environ.get("PORT"):
    options["port"] = int(os.environ["PORT"])
serve(app, **options)
`},
	{"a dotenv file beside gunicorn", `-- requirements.txt --
gunicorn==23.0.0
python-dotenv==1.2.1
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
-- app.py --
from dotenv import load_dotenv

load_dotenv()


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]
`},
	{"an error on the way to the server", `-- go.mod --
module dome

go 1.25.4
-- Procfile --
web: bin/dome
-- .env.example --
STAR_KEY=
-- main.go --
package main

import (
	"errors"
	"log"
	"net/http"
	"os"
)

type config struct{ key, port string }

func load() (config, error) {
	c := config{key: os.Getenv("STAR_KEY"), port: os.Getenv("PORT")}
	if c.key == "" {
		return c, errors.New("STAR_KEY is not set")
	}
	if c.port == "" {
		c.port = "8080"
	}
	return c, nil
}

func run() error {
	c, err := load()
	if err != nil {
		return err
	}
	return http.ListenAndServe(":"+c.port, nil)
}

func main() {
	if err := run(); err != nil {
		log.Fatal(err)
	}
}
`},
	{"options under a condition", `-- go.mod --
module dome

go 1.25.4
-- Procfile --
web: bin/dome
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

type option func(*http.Server)

func withAddr(a string) option { return func(s *http.Server) { s.Addr = a } }

func newServer(list ...option) *http.Server {
	s := &http.Server{Addr: ":8080"}
	for _, o := range list {
		o(s)
	}
	return s
}

func main() {
	var list []option
	if p := os.Getenv("PORT"); p != "" {
		list = append(list, withAddr(":"+p))
	}
	log.Fatal(newServer(list...).ListenAndServe())
}
`},
	{"a method of the class beside one of its objects", `-- Gemfile --
source "https://rubygems.org"
ruby "3.4.7"
-- Procfile --
web: ruby app.rb
-- app.rb --
require "socket"

class Settings
  attr_reader :port

  def self.port(raw)
    raise ArgumentError, "PORT" unless raw.match?(/\A\d+\z/)

    raw.to_i
  end

  def initialize(env)
    @port = self.class.port(env.fetch("PORT", "8080"))
  end
end

server = TCPServer.new("0.0.0.0", Settings.new(ENV).port)
loop { server.accept.close }
`},
	{"a program of PHP without an ending", `-- composer.json --
{"require":{"php":"^8.4"}}
-- composer.lock --
{"packages":[]}
-- Procfile --
web: php bin/serve
-- bin/serve --
#!/usr/bin/env php
<?php
final class Gate
{
    public function __construct(private readonly string $host, private readonly int $port)
    {
    }

    public function run(): void
    {
        $s = stream_socket_server("tcp://{$this->host}:{$this->port}");
        while (true) {
            $c = @stream_socket_accept($s, 60);
            if ($c) fclose($c);
        }
    }
}
$gate = new Gate("0.0.0.0", (int) (getenv("PORT") ?: 8080));
$gate->run();
`},
}

func TestWholeApplicationsAreSound(t *testing.T) {
	t.Parallel()
	for _, c := range wholes {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			r := run(t, plant(t, c.tree), nil)
			if len(r.Components) == 0 {
				t.Fatal("no component is found")
			}
			for _, f := range r.Findings {
				family, _, _ := strings.Cut(f.Rule, "/")
				switch family {
				case "start", "port", "env", "runtime":
					t.Errorf("%s at %s: %s", f.Rule, f.Where, f.Message)
				}
			}
			listens := false
			for _, comp := range r.Components {
				for _, s := range comp.Starts {
					listens = listens || len(s.Listeners) > 0
				}
			}
			if !listens {
				t.Error("no listener is found")
			}
		})
	}
}
