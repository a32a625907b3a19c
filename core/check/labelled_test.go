package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
)

// labelled are trees with the rules of start, port and env that speak of them; most
// have a sound twin beside them.
var labelled = []struct{ name, tree, want string }{
	{"factory not called", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn site1.wsgi:app --bind 0.0.0.0:$PORT
-- site1/__init__.py --
from flask import Flask
def create_app():
    app = Flask(__name__)
    return app
-- site1/wsgi.py --
from site1 import create_app
if __name__ == "__main__":
    app = create_app()
    app.run()
`, "start/callable-missing"},
	{"twin made at module level", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn site1.wsgi:app --bind 0.0.0.0:$PORT
-- site1/__init__.py --
from flask import Flask
def create_app():
    app = Flask(__name__)
    return app
-- site1/wsgi.py --
from site1 import create_app
app = create_app()
if __name__ == "__main__":
    app.run()
`, ""},
	{"web that listens nowhere", `-- package.json --
{"name":"plates"}
-- Procfile --
web: node server.js
-- server.js --
const app = require('./app');
module.exports = app;
-- app.js --
const http = require('http');
module.exports = http.createServer((q, r) => r.end('x'));
`, "port/none"},
	{"twin listens in other file", `-- package.json --
{"name":"plates"}
-- Procfile --
web: node server.js
-- server.js --
const app = require('./app');
module.exports = app;
-- app.js --
const http = require('http');
module.exports = http.createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, ""},
	{"deno without env permission", `-- deno.json --
{"tasks":{"start":"deno run --allow-net main.ts"}}
-- Procfile --
web: deno task start
-- main.ts --
const port = Number(Deno.env.get("PORT") ?? 8000);
Deno.serve({ port }, () => new Response("x"));
`, "start/permission"},
	{"twin scoped env", `-- deno.json --
{"tasks":{"start":"deno run --allow-net --allow-env=PORT,HOME main.ts"}}
-- Procfile --
web: deno task start
-- main.ts --
const port = Number(Deno.env.get("PORT") ?? 8000);
Deno.serve({ port }, () => new Response("x"));
`, ""},
	{"deno read needed", `-- deno.json --
{}
-- Procfile --
web: deno run --allow-net --allow-env main.ts
-- main.ts --
const page = await Deno.readTextFile("./index.html");
Deno.serve({ port: Number(Deno.env.get("PORT") ?? 8000) }, () => new Response(page));
-- index.html --
<p>x</p>
`, "start/permission"},
	{"twin -A", `-- deno.json --
{}
-- Procfile --
web: deno run -A main.ts
-- main.ts --
const page = await Deno.readTextFile("./index.html");
Deno.serve({ port: Number(Deno.env.get("PORT") ?? 8000) }, () => new Response(page));
-- index.html --
<p>x</p>
`, ""},
	{"go required undeclared", `-- go.mod --
module plates

go 1.26
-- Procfile --
web: bin/plates
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

func must(name string) string {
	v, ok := os.LookupEnv(name)
	if !ok {
		log.Fatalf("%s is not set", name)
	}
	return v
}

func main() {
	token := must("PLATES_TOKEN")
	log.Println(len(token))
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	log.Fatal(http.ListenAndServe(":"+port, nil))
}
`, "env/undeclared"},
	{"twin fallback", `-- go.mod --
module plates

go 1.26
-- Procfile --
web: bin/plates
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

func env(name, fallback string) string {
	if v, ok := os.LookupEnv(name); ok {
		return v
	}
	return fallback
}

func main() {
	token := env("PLATES_TOKEN", "")
	log.Println(len(token), os.Getenv("HOME"), os.Getenv("HOSTNAME"))
	log.Fatal(http.ListenAndServe(":"+env("PORT", "8080"), nil))
}
`, ""},
	{"viper style required", `-- go.mod --
module plates

go 1.26

require github.com/kelseyhightower/envconfig v1.4.0
-- go.sum --
github.com/kelseyhightower/envconfig v1.4.0 h1:x
-- Procfile --
web: bin/plates
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"

	"github.com/kelseyhightower/envconfig"
)

type Config struct {
	Port  int    ` + "`" + `envconfig:"PORT" default:"8080"` + "`" + `
	Token string ` + "`" + `envconfig:"PLATES_TOKEN" required:"true"` + "`" + `
}

func main() {
	var c Config
	if err := envconfig.Process("", &c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf(":%d", c.Port), nil))
}
`, "env/undeclared"},
	{"zod required", `-- package.json --
{"name":"plates","type":"module","dependencies":{"zod":"3.23.8"}}
-- Procfile --
web: node server.js
-- server.js --
import http from 'http';
import { z } from 'zod';
const env = z.object({ PORT: z.coerce.number().default(3000), SKY_TOKEN: z.string().min(1), TRACE: z.string().optional() }).parse(process.env);
http.createServer((q, r) => r.end('x')).listen(env.PORT);
`, "env/undeclared"},
	{"shell start script requires", `-- package.json --
{"name":"plates"}
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
set -eu
: "${SKY_TOKEN:?SKY_TOKEN must be set}"
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"test and exit", `-- package.json --
{"name":"plates"}
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
if [ -z "$SKY_TOKEN" ]; then
  echo "SKY_TOKEN is not set" >&2
  exit 1
fi
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"and form", `-- package.json --
{"name":"plates"}
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
[ -n "${SKY_TOKEN:-}" ] || { echo no token; exit 1; }
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"twin default given", `-- package.json --
{"name":"plates"}
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
: "${SKY_TOKEN:=none}"
export SKY_TOKEN
[ -n "${DEBUG_START:-}" ] && set -x
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, ""},
	{"declared", `-- package.json --
{"name":"plates"}
-- .env.example --
SKY_TOKEN=
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
: "${SKY_TOKEN:?}"
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, ""},
	{"port insisted on in script", `-- package.json --
{"name":"plates"}
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
: "${PORT:?PORT is not set}"
exec node server.js
-- server.js --
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT);
`, "port/no-fallback"},
	{"bracket outside of quotes", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn app:create_app() -b 0.0.0.0:$PORT
-- app.py --
from flask import Flask
def create_app():
    return Flask(__name__)
`, "start/unreadable"},
	{"bracket in quotes", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn 'app:create_app()' -b 0.0.0.0:$PORT
-- app.py --
from flask import Flask
def create_app():
    return Flask(__name__)
`, ""},
	{"part of a component is none of its own", `-- Gemfile --
source 'https://rubygems.org'
gem 'sinatra', '4.0.0'
gem 'puma', '6.4.2'
gem 'rackup', '2.1.0'
-- Procfile --
web: bundle exec ruby server.rb
-- server.rb --
require_relative 'lib/dome/app'
Dome::App.set :bind, '0.0.0.0'
Dome::App.set :port, ENV.fetch('PORT', 4567)
Dome::App.run!
-- lib/dome/app.rb --
require 'sinatra/base'
module Dome
  class App < Sinatra::Base
    get('/') { 'x' }
  end
end
`, ""},
	{"environment of PHP that stays empty", `-- composer.json --
{"require":{"php":"~8.2.0"}}
-- Procfile --
web: php server.php
-- server.php --
<?php
$port = $_ENV['PORT'] ?? 8080;
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, "port/literal"},
	{"environment of PHP by getenv", `-- composer.json --
{"require":{"php":"~8.2.0"}}
-- Procfile --
web: php server.php
-- server.php --
<?php
$port = getenv('PORT') ?: ($_ENV['PORT'] ?? 8080);
$s = stream_socket_server("tcp://0.0.0.0:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ""},
	{"socket file only", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn app:app --bind unix:plates.sock
-- app.py --
from flask import Flask
app = Flask(__name__)
`, "port/loopback"},
	{"reads through a helper that ends", `-- package.json --
{"name":"plates"}
-- Procfile --
web: node server.js
-- server.js --
const missing = ['SKY_TOKEN', 'SKY_URL'].filter((k) => !process.env[k]);
if (missing.length) { console.error('missing', missing.join()); process.exit(1); }
require('http').createServer((q, r) => r.end('x')).listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"first of several in Go", `-- go.mod --
module plates

go 1.26
-- Procfile --
web: bin/plates
-- main.go --
package main

import (
	"cmp"
	"net/http"
	"os"
)

func main() {
	host := cmp.Or(os.Getenv("PLATES_HOST"), "0.0.0.0")
	if v := os.Getenv("PLATES_LABEL"); v != "" {
		println(v)
	}
	http.ListenAndServe(host+":"+cmp.Or(os.Getenv("PORT"), "8080"), nil)
}
`, ""},
	{"class that is nowhere", `-- pom.xml --
<project xmlns="http://maven.apache.org/POM/4.0.0"><modelVersion>4.0.0</modelVersion>
<groupId>obs</groupId><artifactId>plates</artifactId><version>1.0</version>
<properties><maven.compiler.release>17</maven.compiler.release></properties>
</project>
-- Procfile --
web: java -cp target/classes obs.Main
-- src/main/java/obs/App.java --
package obs;
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
public class App {
    public static void main(String[] a) throws Exception {
        int port = Integer.parseInt(System.getenv().getOrDefault("PORT", "8080"));
        HttpServer.create(new InetSocketAddress(port), 0).start();
    }
}
`, "start/target-missing"},
	{"twin daemon in other process", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT -n daemon
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ""},
	{"nginx in foreground ok", `-- Dockerfile --
FROM nginx:1.27.0-alpine
COPY public /usr/share/nginx/html
EXPOSE 80
-- public/index.html --
<p>x</p>
`, ""},
	{"gunicorn reload in conf", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn -c conf.py app:app
-- conf.py --
import os
bind = "0.0.0.0:" + os.environ.get("PORT", "8000")
reload = True
-- app.py --
from flask import Flask
app = Flask(__name__)
`, "start/reload"},
	{"twin reload by development", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn -c conf.py app:app
-- conf.py --
import os
bind = "0.0.0.0:" + os.environ.get("PORT", "8000")
reload = os.environ.get("APP_STAGE") == "development"
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ""},
	{"java class that is nowhere", `-- Procfile --
web: java -cp target/classes dome.Sky
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>dome</artifactId><version>1</version><properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/dome/Other.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Other {
    public static void main(String[] args) throws Exception {
        HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "8000"))), 0).start();
    }
}
`, "start/target-missing"},
	{"twin: a name that Kotlin gives", `-- Procfile --
web: java -cp target/classes dome.Sky
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>dome</artifactId><version>1</version><properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/dome/Other.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Other {
    public static void main(String[] args) throws Exception {
        HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "8000"))), 0).start();
    }
}
-- src/main/kotlin/dome/Up.kt --
@file:JvmName("Sky")
package dome

fun main() {
}
`, ""},
	{"twin: a class of Scala", `-- Procfile --
web: java -cp target/classes dome.Sky
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>dome</artifactId><version>1</version><properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/dome/Other.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Other {
    public static void main(String[] args) throws Exception {
        HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "8000"))), 0).start();
    }
}
-- src/main/scala/dome/Sky.scala --
package dome

object Sky extends App {
}
`, ""},
	{"twin: a class of another module", `-- Procfile --
web: java -cp target/classes dome.Sky
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>dome</artifactId><version>1</version><properties><maven.compiler.release>17</maven.compiler.release></properties></project>
-- src/main/java/dome/Other.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Other {
    public static void main(String[] args) throws Exception {
        HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "8000"))), 0).start();
    }
}
-- core/src/main/java/dome/Sky.java --
package dome;

public class Sky {
    public static void main(String[] args) {
    }
}
`, ""},
	{"twin: a callable that is set by name", `-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- Procfile --
web: gunicorn app:app --bind 0.0.0.0:$PORT
-- app.py --
import sys
from flask import Flask


def create():
    return Flask(__name__)


setattr(sys.modules[__name__], "app", create())

if __name__ == "__main__":
    app = create()
    app.run()
`, ""},
	{"twin: settings that may be missing", `-- requirements.txt --
pydantic-settings==2.5.0
-- Procfile --
web: python app.py
-- app.py --
import os
from http.server import BaseHTTPRequestHandler, HTTPServer

from pydantic import ValidationError
from pydantic_settings import BaseSettings


class Settings(BaseSettings):
    dome_dsn: str


try:
    settings = Settings()
except ValidationError:
    settings = None
HTTPServer(("0.0.0.0", int(os.environ.get("PORT", "8000"))), BaseHTTPRequestHandler).serve_forever()
`, ""},
	{"the default port of Spring", `-- Procfile --
web: java -jar target/dome-1.0.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion>
<parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>3.3.0</version></parent>
<groupId>o</groupId><artifactId>dome</artifactId><version>1.0</version>
<dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
<build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/o/App.java --
package o;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
@SpringBootApplication
public class App { public static void main(String[] a) { SpringApplication.run(App.class, a); } }
`, "port/literal"},
	{"twin: a variable of Spring that the command makes of PORT", `-- Procfile --
web: SERVER_PORT=$PORT java -jar target/dome-1.0.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion>
<parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>3.3.0</version></parent>
<groupId>o</groupId><artifactId>dome</artifactId><version>1.0</version>
<dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
<build><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build></project>
-- src/main/java/o/App.java --
package o;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
@SpringBootApplication
public class App { public static void main(String[] a) { SpringApplication.run(App.class, a); } }
`, ""},
	{"the defaults of Rocket", `-- Procfile --
web: ./target/release/dome
-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
rocket = "=0.5.1"
-- src/main.rs --
#[macro_use] extern crate rocket;
#[get("/")]
fn index() -> &'static str { "x" }
#[launch]
fn rocket() -> _ { rocket::build().mount("/", routes![index]) }
`, "port/literal port/loopback"},
	{"twin: variables of Rocket that the command sets", `-- Procfile --
web: ROCKET_ADDRESS=0.0.0.0 ROCKET_PORT=$PORT ./target/release/dome
-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
rocket = "=0.5.1"
-- src/main.rs --
#[macro_use] extern crate rocket;
#[get("/")]
fn index() -> &'static str { "x" }
#[launch]
fn rocket() -> _ { rocket::build().mount("/", routes![index]) }
`, ""},
	{"twin: addresses of ASP.NET Core that the command sets", `-- Procfile --
web: ASPNETCORE_URLS=http://0.0.0.0:$PORT dotnet out/dome.dll
-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
app.MapGet("/", () => "x");
app.Run();
`, ""},
	{"mix run that returns", `-- Procfile --
web: MIX_ENV=prod mix run
-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.15", deps: deps()]
  def application, do: [mod: {Dome.Application, []}, extra_applications: [:logger]]
  defp deps, do: [{:bandit, "1.5.0"}, {:plug, "1.16.0"}]
end
-- lib/dome/application.ex --
defmodule Dome.Application do
  use Application
  def start(_type, _args) do
    port = String.to_integer(System.get_env("PORT", "4000"))
    Supervisor.start_link([{Bandit, plug: Dome.Router, port: port}], strategy: :one_for_one)
  end
end
-- lib/dome/router.ex --
defmodule Dome.Router do
  use Plug.Router
  plug :match
  plug :dispatch
  get "/" do
    send_resp(conn, 200, "x")
  end
end
`, "start/background"},
	{"twin: mix run that stays", `-- Procfile --
web: MIX_ENV=prod mix run --no-halt
-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.15", deps: deps()]
  def application, do: [mod: {Dome.Application, []}, extra_applications: [:logger]]
  defp deps, do: [{:bandit, "1.5.0"}, {:plug, "1.16.0"}]
end
-- lib/dome/application.ex --
defmodule Dome.Application do
  use Application
  def start(_type, _args) do
    port = String.to_integer(System.get_env("PORT", "4000"))
    Supervisor.start_link([{Bandit, plug: Dome.Router, port: port}], strategy: :one_for_one)
  end
end
-- lib/dome/router.ex --
defmodule Dome.Router do
  use Plug.Router
  plug :match
  plug :dispatch
  get "/" do
    send_resp(conn, 200, "x")
  end
end
`, ""},
	{"a class that Kotlin names otherwise", `-- Procfile --
web: java -cp build/libs/dome-all.jar dome.Main
-- settings.gradle.kts --
rootProject.name = "dome"
-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies { implementation("io.ktor:ktor-server-netty:3.0.0") }
application { mainClass.set("dome.MainKt") }
-- src/main/kotlin/dome/Main.kt --
package dome
import io.ktor.server.engine.*
import io.ktor.server.netty.*
import io.ktor.server.response.*
import io.ktor.server.routing.*
fun main() {
    val port = System.getenv("PORT")?.toInt() ?: 8080
    embeddedServer(Netty, port = port, host = "0.0.0.0") {
        routing { get("/") { call.respondText("x") } }
    }.start(wait = true)
}
`, "start/target-missing"},
	{"twin: the class that Kotlin makes of a file", `-- Procfile --
web: java -cp build/libs/dome-all.jar dome.MainKt
-- settings.gradle.kts --
rootProject.name = "dome"
-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies { implementation("io.ktor:ktor-server-netty:3.0.0") }
application { mainClass.set("dome.MainKt") }
-- src/main/kotlin/dome/Main.kt --
package dome
import io.ktor.server.engine.*
import io.ktor.server.netty.*
import io.ktor.server.response.*
import io.ktor.server.routing.*
fun main() {
    val port = System.getenv("PORT")?.toInt() ?: 8080
    embeddedServer(Netty, port = port, host = "0.0.0.0") {
        routing { get("/") { call.respondText("x") } }
    }.start(wait = true)
}
`, ""},
	{"a folder that PHP should serve", `-- Procfile --
web: php -S 0.0.0.0:$PORT -t web
-- public/index.php --
<?php echo "x";
`, "start/dev-server start/target-missing"},
	{"twin: the folder that is there", `-- Procfile --
web: php -S 0.0.0.0:$PORT -t public
-- public/index.php --
<?php echo "x";
`, "start/dev-server"},
	{"settings that gunicorn loads, whose error is caught", `-- Procfile --
web: gunicorn sky:app -b 0.0.0.0:$PORT
-- requirements.txt --
pydantic==1.10.4
gunicorn==22.0.0
flask==3.0.3
-- sky.py --
from flask import Flask
from pydantic import BaseSettings, ValidationError


class Settings(BaseSettings):
    api_key: str


try:
    settings = Settings()
except ValidationError:
    settings = None
app = Flask(__name__)
`, ""},
	{"settings that gunicorn loads", `-- Procfile --
web: gunicorn sky:app -b 0.0.0.0:$PORT
-- requirements.txt --
pydantic==1.10.4
gunicorn==22.0.0
flask==3.0.3
-- sky.py --
from flask import Flask
from pydantic import BaseSettings


class Settings(BaseSettings):
    api_key: str


settings = Settings()
app = Flask(__name__)
`, "env/undeclared"},
}

func TestLabelled(t *testing.T) {
	t.Parallel()
	for _, c := range labelled {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			var got []string
			for _, f := range run(t, plant(t, c.tree), nil).Findings {
				if family, _, _ := strings.Cut(f.Rule, "/"); family == "start" || family == "port" || family == "env" {
					got = append(got, f.Rule)
				}
			}
			slices.Sort(got)
			if said := strings.Join(slices.Compact(got), " "); said != c.want {
				t.Errorf("found %q, not %q", said, c.want)
			}
		})
	}
}

// TestScriptsThatGrow goes through scripts whose variables and arguments double many
// times over: what they come to is not worked out.
func TestScriptsThatGrow(t *testing.T) {
	t.Parallel()
	double := "a=$PORT\n"
	for range 60 {
		double += "a=$a$a\n"
	}
	calls := ""
	for i := range 40 {
		calls += fmt.Sprintf("f%d() { f%d \"$1$1\"; }\n", i, i+1)
	}
	calls += "f40() { echo \"$1\"; }\na=$(f0 $PORT)\n"
	for name, script := range map[string]string{"variables": double, "arguments": calls} {
		t.Run(name, func(t *testing.T) {
			tree := "-- Procfile --\nweb: sh run.sh\n-- run.sh --\n" + script + "if [ \"${a%%1*}\" = x ]; then PORT=1; fi\nexec python3 -m http.server $a\n"
			if got := allOutcomes(run(t, plant(t, tree), map[string]string{"PORT": "8000"}).Components[0].Starts); got != "unknown" {
				t.Errorf("the survey says %s", got)
			}
		})
	}
}
