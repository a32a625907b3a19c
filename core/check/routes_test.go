package check_test

import (
	"fmt"
	"strings"
	"testing"

	"ubique/core/check"
)

// routes are applications with the paths that they answer.
var routes = []struct{ name, tree, want string }{
	{"Express and a router of another file", `-- package.json --
{ "name": "dome", "scripts": { "start": "node app.js" }, "dependencies": { "express": "5.1.0" } }
-- app.js --
const express = require("express");
const app = express();
app.set("title", "dome");
app.get("/", (req, res) => res.send(app.get("title")));
app.use("/nights", require("./nights"));
app.route("/health").get((req, res) => res.send("ok"));
app.listen(process.env.PORT || 3000);
// app.get("/not", x)
-- nights.js --
const router = require("express").Router();
router.get("/", (req, res) => res.json([]));
router.post("/:id/seats", (req, res) => res.json({}));
module.exports = router;
`, "GET / app.js:4, GET /health app.js:6, GET /nights nights.js:2, POST /nights/:id/seats nights.js:3"},
	{"Fastify with objects", `-- package.json --
{ "name": "dome", "type": "module", "scripts": { "start": "node app.js" }, "dependencies": { "fastify": "5.6.0" } }
-- app.js --
import Fastify from "fastify";
const app = Fastify();
app.route({ method: "GET", url: "/healthz", handler: async () => "ok" });
app.post("/hook", async () => "ok");
app.listen({ port: process.env.PORT || 3000, host: "0.0.0.0" });
`, "GET /healthz app.js:3, POST /hook app.js:4"},
	{"Nest", `-- package.json --
{ "name": "dome", "scripts": { "build": "nest build", "start": "node dist/main" }, "dependencies": { "@nestjs/core": "11.1.0", "@nestjs/common": "11.1.0", "@nestjs/cli": "11.0.0" } }
-- src/main.ts --
import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module';
async function bootstrap() {
  const app = await NestFactory.create(AppModule);
  await app.listen(process.env.PORT ?? 3000);
}
bootstrap();
-- src/app.module.ts --
import { Module, Controller, Get, Post } from '@nestjs/common';
@Controller('health')
export class HealthController {
  @Get()
  check() { return 'ok'; }
}
@Controller()
export class NightsController {
  @Get('nights')
  all() { return []; }
  @Post('nights')
  add() { return {}; }
}
@Module({ controllers: [HealthController, NightsController] })
export class AppModule {}
`, "GET /health src/app.module.ts:4, GET /nights src/app.module.ts:9, POST /nights src/app.module.ts:11"},
	{"every path by one function", `-- Procfile --
web: node s.js
-- s.js --
const http = require("http");
http.createServer((req, res) => res.end("clear")).listen(process.env.PORT || 3000);
`, "any * s.js:2"},
	{"Flask with blueprints", `-- requirements.txt --
flask==3.1.2
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
from nights import bp
app = Flask(__name__)
app.register_blueprint(bp, url_prefix="/nights")

@app.route("/", methods=["GET", "POST"])
def index():
    return "clear"
-- nights.py --
from flask import Blueprint
bp = Blueprint("nights", __name__)

@bp.get("/<int:id>")
def one(id):
    return str(id)
`, "GET / app.py:6, POST / app.py:6, GET /nights/<int:id> nights.py:4"},
	{"FastAPI with routers", `-- requirements.txt --
fastapi==0.121.0
uvicorn==0.38.0
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $PORT
-- app.py --
from fastapi import FastAPI
from api import nights

app = FastAPI()
app.include_router(nights.router, prefix="/api")

@app.get("/healthz")
async def healthz():
    return "ok"
-- api/__init__.py --
-- api/nights.py --
from fastapi import APIRouter
router = APIRouter(prefix="/nights")

@router.get("/")
async def all():
    return []
`, "GET /api/nights api/nights.py:4, GET /healthz app.py:7"},
	{"Django", djangoSite("DEBUG = False\nALLOWED_HOSTS = ['a']") + `-- Procfile --
web: gunicorn hill.wsgi
`, ""},
	{"Sinatra", `-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.2.1"
-- Procfile --
web: ruby app.rb
-- app.rb --
require "sinatra"
set :bind, "0.0.0.0"
get "/" do
  "clear"
end
post "/hook" do
  "ok"
end
`, "GET / app.rb:3, POST /hook app.rb:6"},
	{"Rails", `-- Gemfile --
source "https://rubygems.org"
gem "rails", "8.1.0"
gem "puma", "7.1.0"
-- config.ru --
require_relative "config/environment"
run Rails.application
-- config/environment.rb --
require_relative "application"
-- config/application.rb --
require "rails/all"
-- config/routes.rb --
Rails.application.routes.draw do
  get "up" => "rails/health#show"
  root "nights#index"
end
-- Procfile --
web: bundle exec puma -p $PORT
`, "GET / config/routes.rb:3, GET /up config/routes.rb:2"},
	{"net/http with methods, chi", `-- go.mod --
module dome

go 1.25
-- Procfile --
web: go run .
-- main.go --
package main

import "net/http"; import "os"

func main() {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{$}", func(w http.ResponseWriter, r *http.Request) {})
	mux.HandleFunc("/healthz", func(w http.ResponseWriter, r *http.Request) {})
	mux.Handle("POST /hook", http.NotFoundHandler())
	http.ListenAndServe(":"+os.Getenv("PORT"), mux)
}
`, "GET / main.go:7, any /healthz main.go:8, POST /hook main.go:9"},
	{"Spring", spring + `-- src/main/java/dome/Dome.java --
package dome;

import org.springframework.boot.SpringApplication;
import org.springframework.web.bind.annotation.*;

@RestController
@RequestMapping("/nights")
public class Dome {
  public static void main(String[] args) {
    SpringApplication.run(Dome.class, args);
  }

  @GetMapping
  String all() {
    return "";
  }

  @PostMapping("/{id}/seats")
  String seats() {
    return "";
  }
}
`, "GET /nights src/main/java/dome/Dome.java:13, POST /nights/{id}/seats src/main/java/dome/Dome.java:18"},
	{"Laravel", `-- composer.json --
{ "require": { "php": "^8.4", "laravel/framework": "^12.0" } }
-- artisan --
-- public/index.php --
<?php
-- routes/web.php --
<?php
use Illuminate\Support\Facades\Route;
Route::get('/', fn () => view('welcome'));
-- routes/api.php --
<?php
use Illuminate\Support\Facades\Route;
Route::post('nights', fn () => []);
`, "GET / routes/web.php:3, POST /api/nights routes/api.php:3"},
	{"ASP.NET Core", dotnet("") + `-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.MapGet("/", () => "clear");
app.MapPost("/hook", () => "ok");
app.Run();
-- Health.cs --
[ApiController]
[Route("health")]
public class Health : ControllerBase
{
    [HttpGet]
    public string Get() => "ok";
}
`, "GET / Program.cs:2, GET /health Health.cs:5, POST /hook Program.cs:3"},
	{"Axum", cargo("axum tokio") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
use axum::{routing::{get, post}, Router};

#[tokio::main]
async fn main() {
    let app = Router::new()
        .route("/", get(|| async { "clear" }))
        .route("/nights", get(all).post(add));
    let l = tokio::net::TcpListener::bind("0.0.0.0:3000").await.unwrap();
    axum::serve(l, app).await.unwrap();
}
`, "GET / src/main.rs:5, GET /nights src/main.rs:5, POST /nights src/main.rs:5"},
	{"Plug", mix("bandit") + `-- Procfile --
web: mix run --no-halt
-- lib/dome/router.ex --
defmodule Dome.Router do
  use Plug.Router
  plug :match

  get "/" do
    send_resp(conn, 200, "clear")
  end

  post "/hook" do
    send_resp(conn, 200, "ok")
  end
end
`, "GET / lib/dome/router.ex:5, POST /hook lib/dome/router.ex:9"},
	{"Bun with routes", `-- package.json --
{ "name": "dome", "scripts": { "start": "bun s.ts" } }
-- s.ts --
Bun.serve({
  port: process.env.PORT ?? 3000,
  routes: { "/": new Response("clear"), "/health": new Response("ok") },
});
`, "any / s.ts:3, any /health s.ts:3"},
	{"pages by their place", `-- package.json --
{ "name": "dome", "scripts": { "build": "next build", "start": "next start -p $PORT" }, "dependencies": { "next": "16.0.1" } }
-- app/page.tsx --
export default function Page() { return null; }
-- app/health/route.ts --
export function GET() { return new Response("ok"); }
`, "GET / app/page.tsx:1, GET /health app/health/route.ts:1"},
}

func TestRoutes(t *testing.T) {
	t.Parallel()
	hosts, err := check.Hosts(nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range routes {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			r, err := check.Run(check.Options{Dir: plant(t, c.tree), Hosts: hosts, Today: "2026-11-26"})
			if err != nil {
				t.Fatal(err)
			}
			var got []string
			for _, comp := range r.Components {
				for _, x := range comp.Routes {
					got = append(got, fmt.Sprintf("%s %s %s:%d", x.Method, x.Path, x.At.File, x.At.Line))
				}
			}
			if all := strings.Join(got, ", "); all != c.want {
				t.Errorf("answers %s\nwanted  %s", all, c.want)
			}
		})
	}
}
