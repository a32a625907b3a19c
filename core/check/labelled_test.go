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
	{"twin: a socket file in a volume that another container has too", `-- Dockerfile --
FROM python:3.13-slim
WORKDIR /app
COPY . .
RUN pip install -r requirements.txt
CMD ["gunicorn", "-b", "unix:/run/sky/app.sock", "sky:app"]
-- requirements.txt --
flask==3.1.0
gunicorn==23.0.0
-- .python-version --
3.13
-- sky.py --
from flask import Flask
app = Flask(__name__)
-- compose.yaml --
services:
  dome:
    build: .
    volumes: [sock:/run/sky]
  front:
    image: nginx:1.27
    ports: ["8080:80"]
    volumes: [sock:/run/sky]
volumes:
  sock: {}
`, ""},
	{"socket file in an image, with a volume for other files", `-- Dockerfile --
FROM python:3.13-slim
WORKDIR /app
COPY . .
RUN pip install -r requirements.txt
CMD ["gunicorn", "-b", "unix:/run/sky/app.sock", "sky:app"]
-- requirements.txt --
flask==3.1.0
gunicorn==23.0.0
-- .python-version --
3.13
-- sky.py --
from flask import Flask
app = Flask(__name__)
-- compose.yaml --
services:
  dome:
    build: .
    volumes: ["plates:/srv/plates"]
`, "port/loopback"},
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
	{"twin: a folder that the command makes before", `-- Procfile --
web: mkdir -p web && cp index.php web/ && php -S 0.0.0.0:$PORT -t web
-- index.php --
<?php echo "x";
`, "start/dev-server"},
	{"twin: a folder that a script of the manifest makes", `-- Procfile --
web: php -S 0.0.0.0:$PORT -t web
-- composer.json --
{"scripts":{"post-install-cmd":"mkdir -p web && cp *.php web/"}}
-- index.php --
<?php echo "x";
`, "start/dev-server"},
	{"a script that only serves the folder", `-- Procfile --
web: php -S 0.0.0.0:$PORT -t web
-- composer.json --
{"scripts":{"serve":"php -S 0.0.0.0:4710 -t web"}}
-- index.php --
<?php echo "x";
`, "start/dev-server start/target-missing"},
	{"twin: run has another meaning there", `-- Procfile --
web: mix run
-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.17", aliases: [run: "run --no-halt"]]
end
`, ""},
	{"twin: mix as a script on the path", `-- Procfile --
web: elixir --no-halt -S mix run
-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.17"]
end
`, ""},
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
	{"read: js destructured default", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const { SKY_NAME = 'dome', SKY_ZOOM = '' } = process.env;
console.log(SKY_NAME, SKY_ZOOM);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js and test", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
if (process.env.SKY_TOKEN) require('http').get('http://x/' + process.env.SKY_TOKEN);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js in test", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
if ('SKY_TOKEN' in process.env) console.log(process.env.SKY_TOKEN.length);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js short circuit", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
process.env.SKY_HOOK && console.log(process.env.SKY_HOOK.length);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js optional chain", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const list = process.env.SKY_LIST?.split(',') ?? [];
console.log(list);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js equals test", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const strict = process.env.SKY_STRICT === 'true';
console.log(strict);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js not equals production", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
if (process.env.SKY_CACHE !== 'off') console.log('cache');
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js double not", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const on = !!process.env.SKY_FEATURE;
console.log(on);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js number or", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const n = Number(process.env.SKY_POOL) || 4;
console.log(n);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js parseInt with isNaN", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
let n = parseInt(process.env.SKY_POOL, 10);
if (Number.isNaN(n)) n = 4;
console.log(n);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js function with default", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const env = (k, d) => (process.env[k] === undefined ? d : process.env[k]);
console.log(env('SKY_NAME', 'dome'), env('SKY_KEY', ''));
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js ternary", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const url = process.env.SKY_URL ? process.env.SKY_URL : 'http://localhost';
console.log(url);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js assign default", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
process.env.SKY_NAME ??= 'dome';
console.log(process.env.SKY_NAME.length);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js filter of list", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const hosts = [process.env.SKY_A, process.env.SKY_B].filter(Boolean);
console.log(hosts);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js set before", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
if (!process.env.SKY_NAME) process.env.SKY_NAME = 'dome';
console.log(process.env.SKY_NAME.length);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js needed throws", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const k = process.env.SKY_KEY;
if (!k) throw new Error('SKY_KEY');
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"read: js required by assert", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const assert = require('node:assert');
assert(process.env.SKY_KEY, 'SKY_KEY');
const app = require('express')();

app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"read: js method of undefined", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2"}}
-- server.js --
const app = require('express')();
const parts = process.env.SKY_PATHS.split(':');
console.log(parts);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"read: js envalid bool default", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2","envalid":"8.0.0"}}
-- server.js --
const app = require('express')();
const { cleanEnv, bool, str } = require('envalid');
const env = cleanEnv(process.env, { SKY_TLS: bool({ default: false }), SKY_NAME: str({ default: '' }) });
console.log(env.SKY_TLS);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js envalid needed", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2","envalid":"8.0.0"}}
-- server.js --
const app = require('express')();
const { cleanEnv, str } = require('envalid');
const env = cleanEnv(process.env, { SKY_KEY: str() });
console.log(env.SKY_KEY);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"read: js zod optional", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2","zod":"3.23.8"}}
-- server.js --
const app = require('express')();
const { z } = require('zod');
const env = z.object({ SKY_TLS: z.coerce.boolean().default(false), SKY_NAME: z.string().optional() }).parse(process.env);
console.log(env.SKY_TLS);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, ""},
	{"read: js zod needed", `-- package.json --
{"name":"a","scripts":{"start":"node server.js"},"dependencies":{"express":"4.19.2","zod":"3.23.8"}}
-- server.js --
const app = require('express')();
const { z } = require('zod');
const env = z.object({ SKY_KEY: z.string().min(1) }).parse(process.env);
console.log(env.SKY_KEY);
app.get('/', (q, r) => r.send('x'));
app.listen(process.env.PORT || 3000);
`, "env/undeclared"},
	{"read: py get none tested", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
token = os.environ.get("SKY_TOKEN")
if token:
    app.config["TOKEN"] = token
`, ""},
	{"read: py getenv or", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
name = os.getenv("SKY_NAME") or "dome"
`, ""},
	{"read: py key error", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
try:
    key = os.environ["SKY_KEY"]
except KeyError:
    key = None
`, ""},
	{"read: py in environ", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
if "SKY_KEY" in os.environ:
    key = os.environ["SKY_KEY"]
`, ""},
	{"read: py equals", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
debug = os.environ.get("SKY_STRICT") == "1"
`, ""},
	{"read: py lower in", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
strict = os.environ.get("SKY_STRICT", "").lower() in ("1", "yes")
`, ""},
	{"read: py bool of", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
strict = bool(os.environ.get("SKY_STRICT"))
`, ""},
	{"read: py setdefault", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
os.environ.setdefault("SKY_NAME", "dome")
name = os.environ["SKY_NAME"]
`, ""},
	{"read: py is not none", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
raw = os.environ.get("SKY_POOL")
pool = int(raw) if raw is not None else 4
`, ""},
	{"read: py walrus", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
if (url := os.environ.get("SKY_URL")) is not None:
    app.config["URL"] = url
`, ""},
	{"read: py prefix loop", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
for k, v in os.environ.items():
    if k.startswith("SKY_"):
        app.config[k[4:]] = v
`, ""},
	{"read: py default none in function", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
def env(name, default=None):
    return os.environ.get(name, default)


name = env("SKY_NAME", "dome")
`, ""},
	{"read: py needed", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
key = os.environ["SKY_KEY"]
`, "env/undeclared"},
	{"read: py needed in class", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
class Config:
    KEY = os.environ["SKY_KEY"]


app.config.from_object(Config)
`, "env/undeclared"},
	{"read: py decouple false", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
python-decouple==3.8
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
from decouple import config
strict = config("SKY_STRICT", default=False, cast=bool)
name = config("SKY_NAME", default="")
`, ""},
	{"read: py decouple needed", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
python-decouple==3.8
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
from decouple import config
key = config("SKY_KEY")
`, "env/undeclared"},
	{"read: py environ defaults", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
django-environ==0.11.2
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
import environ
env = environ.Env(SKY_STRICT=(bool, False))
strict = env("SKY_STRICT")
name = env("SKY_NAME", default="dome")
limit = env.int("SKY_MAX", 5)
`, ""},
	{"read: py environ needed", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
django-environ==0.11.2
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
import environ
env = environ.Env()
key = env("SKY_KEY")
`, "env/undeclared"},
	{"read: py pydantic optional", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
pydantic-settings==2.3.4
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
from typing import Optional
from pydantic_settings import BaseSettings


class S(BaseSettings):
    sky_name: str = "dome"
    sky_token: Optional[str] = None
    sky_strict: bool = False
    sky_sizes: list[int] = []


settings = S()
`, ""},
	{"read: py pydantic needed", `-- Procfile --
web: gunicorn app:app -b 0.0.0.0:$PORT
-- requirements.txt --
flask==3.0.3
gunicorn==22.0.0
pydantic-settings==2.3.4
-- app.py --
import os
from flask import Flask
app = Flask(__name__)
from pydantic_settings import BaseSettings


class S(BaseSettings):
    sky_key: str


settings = S()
`, "env/undeclared"},
	{"read: rb fetch default", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
name = ENV.fetch("SKY_NAME", "dome")
get("/") { "x" }
`, ""},
	{"read: rb fetch block", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
name = ENV.fetch("SKY_NAME") { "dome" }
get("/") { "x" }
`, ""},
	{"read: rb or", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
name = ENV["SKY_NAME"] || "dome"
get("/") { "x" }
`, ""},
	{"read: rb safe nav", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
list = ENV["SKY_LIST"]&.split(",")
get("/") { "x" }
`, ""},
	{"read: rb key", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
set :token, ENV["SKY_TOKEN"] if ENV.key?("SKY_TOKEN")
get("/") { "x" }
`, ""},
	{"read: rb if", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
if ENV["SKY_HOOK"]
  set :hook, ENV["SKY_HOOK"]
end
get("/") { "x" }
`, ""},
	{"read: rb equals", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
set :strict, ENV["SKY_STRICT"] == "1"
get("/") { "x" }
`, ""},
	{"read: rb to_i", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
set :pool, (ENV["SKY_POOL"] || 4).to_i
get("/") { "x" }
`, ""},
	{"read: rb or assign", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
ENV["SKY_NAME"] ||= "dome"
set :name, ENV["SKY_NAME"]
get("/") { "x" }
`, ""},
	{"read: rb needed", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://rubygems.org"
gem "sinatra", "4.0.0"
gem "puma", "6.4.2"
gem "rackup", "2.1.0"
-- app.rb --
require "sinatra"
set :port, ENV.fetch("PORT", 4567)
set :bind, "0.0.0.0"
set :key, ENV.fetch("SKY_KEY")
get("/") { "x" }
`, "env/undeclared"},
	{"read: go empty test", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() {
	name := os.Getenv("SKY_NAME")
	if name == "" {
		name = "dome"
	}
	println(name)
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go lookup", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() {
	if v, ok := os.LookupEnv("SKY_TOKEN"); ok {
		println(v)
	}
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go cmp or", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"cmp"
	"net/http"
	"os"
)

func main() {
	name := cmp.Or(os.Getenv("SKY_NAME"), "dome")
	println(name)
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go equals", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() {
	if os.Getenv("SKY_STRICT") == "1" {
		println("strict")
	}
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go parse bool", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
	"strconv"
)

func main() {
	strict, _ := strconv.ParseBool(os.Getenv("SKY_STRICT"))
	println(strict)
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go atoi err", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"net/http"
	"os"
	"strconv"
)

func main() {
	n, err := strconv.Atoi(os.Getenv("SKY_POOL"))
	if err != nil {
		n = 4
	}
	println(n)
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, ""},
	{"read: go needed", `-- Procfile --
web: ./bin/dome
-- go.mod --
module dome

go 1.22
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
)

func main() {
	if os.Getenv("SKY_KEY") == "" {
		log.Fatal("SKY_KEY")
	}
	port := os.Getenv("PORT")
	if port == "" {
		port = "8080"
	}
	http.ListenAndServe(":"+port, nil)
}
`, "env/undeclared"},
	{"read: php elvis", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
$n = getenv('SKY_NAME') ?: 'dome';
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, ""},
	{"read: php null coalesce", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
$n = $_ENV['SKY_NAME'] ?? 'dome';
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, ""},
	{"read: php false test", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
if (($t = getenv('SKY_TOKEN')) !== false) { echo strlen($t); }
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, ""},
	{"read: php filter", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
$strict = filter_var(getenv('SKY_STRICT'), FILTER_VALIDATE_BOOL);
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, ""},
	{"read: php isset", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
if (isset($_SERVER['SKY_HOOK'])) { echo $_SERVER['SKY_HOOK']; }
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, ""},
	{"read: php needed", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php
$k = getenv('SKY_KEY');
if ($k === false) { fwrite(STDERR, 'SKY_KEY'); exit(1); }
$s = stream_socket_server('tcp://0.0.0.0:' . (getenv('PORT') ?: '8080'));
while (true) { @stream_socket_accept($s, 30); }
`, "env/undeclared"},
	{"read: java or default", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    String n = System.getenv().getOrDefault("SKY_NAME", "dome");
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, ""},
	{"read: java null test", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    String t = System.getenv("SKY_TOKEN");
    if (t != null) System.out.println(t.length());
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, ""},
	{"read: java optional", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    String n = Optional.ofNullable(System.getenv("SKY_NAME")).orElse("dome");
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, ""},
	{"read: java equals", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    boolean strict = "1".equals(System.getenv("SKY_STRICT"));
    System.out.println(strict);
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, ""},
	{"read: java parse boolean", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    boolean strict = Boolean.parseBoolean(System.getenv("SKY_STRICT"));
    System.out.println(strict);
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, ""},
	{"read: java needed", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
public class App {
  public static void main(String[] a) throws Exception {
    String k = Objects.requireNonNull(System.getenv("SKY_KEY"), "SKY_KEY");
    String p = System.getenv("PORT");
    ServerSocket s = new ServerSocket(p == null ? 8080 : Integer.parseInt(p));
    while (true) s.accept().close();
  }
}
`, "env/undeclared"},
	{"a runner starts the development server", `-- Procfile --
web: python run.py
-- run.py --
import os
import subprocess
import sys
sys.exit(subprocess.call(["flask", "--app", "web", "run", "--host", "0.0.0.0", "--port", os.environ.get("PORT", "5000")]))
-- web.py --
from flask import Flask
app = Flask(__name__)
-- requirements.txt --
flask==3.1.0
`, "start/dev-server"},
	{"a runner starts the real server", `-- Procfile --
web: python run.py
-- run.py --
import os
os.execvp("gunicorn", ["gunicorn", "--bind", "0.0.0.0:" + os.environ.get("PORT", "8000"), "web:app"])
-- web.py --
from flask import Flask
app = Flask(__name__)
-- requirements.txt --
flask==3.1.0
gunicorn==23.0.0
`, ""},
	{"a runner listens on loopback only", `-- Procfile --
web: node run.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"}}
-- run.js --
const { spawn } = require('child_process');
spawn('node', ['server.js', '--port', process.env.PORT || '3000'], { stdio: 'inherit' });
-- server.js --
const i = process.argv.indexOf('--port');
require('http').createServer((q, s) => s.end()).listen(+process.argv[i + 1], '127.0.0.1');
`, "port/loopback"},
	{"a runner with a literal port", `-- Procfile --
web: ruby run.rb
-- Gemfile --
source "https://rubygems.org"
ruby "3.4.1"
gem "puma", "6.4.2"
gem "rack", "3.1.8"
-- Gemfile.lock --
GEM
  remote: https://rubygems.org/
  specs:
    nio4r (2.7.3)
    puma (6.4.2)
      nio4r (~> 2.0)
    rack (3.1.8)

PLATFORMS
  ruby

DEPENDENCIES
  puma (= 6.4.2)
  rack (= 3.1.8)

RUBY VERSION
   ruby 3.4.1p0

BUNDLED WITH
   2.6.2
-- run.rb --
exec 'bundle', 'exec', 'puma', '-b', 'tcp://0.0.0.0:9292'
-- config.ru --
run ->(env) { [200, { 'content-type' => 'text/plain' }, ['ok']] }
`, "port/literal"},
	{"a build helper that starts nothing that listens", `-- Procfile --
web: node server.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"}}
-- server.js --
const { execSync } = require('child_process');
const commit = process.env.COMMIT || execSync('node -p 1').toString().trim();
require('http').createServer((q, s) => s.end(commit)).listen(process.env.PORT || 3000);
-- .env.example --
COMMIT=
PORT=
`, ""},
	{"read by a launched program", `-- Procfile --
web: python run.py
-- run.py --
import os
os.execvp("uvicorn", ["uvicorn", "web:app", "--host", "0.0.0.0", "--port", os.environ.get("PORT", "8000")])
-- web.py --
import os
TOKEN = os.environ.get("TELESCOPE_TOKEN", "")
async def app(scope, receive, send):
    assert scope["type"] == "http"
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": TOKEN[:0].encode()})
-- requirements.txt --
uvicorn==0.35.0
-- .env.example --
PORT=
TELESCOPE_TOKEN=
`, ""},
	{"makefile with a loopback host", `-- Procfile --
web: make serve
-- Makefile --
HOST ?= 127.0.0.1
PORT ?= 8000
serve:
	gunicorn --bind $(HOST):$(PORT) web:app
-- requirements.txt --
gunicorn==23.0.0
-- web.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
`, "port/loopback"},
	{"makefile with conditions", `-- Procfile --
web: make serve
-- Makefile --
PORT ?= 8000
ifdef DEBUG
FLAGS = --reload
endif
serve:
	gunicorn --bind 0.0.0.0:$(PORT) $(FLAGS) web:app
-- requirements.txt --
gunicorn==23.0.0
-- web.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
`, ""},
	{"factory of waitress without call", `-- Procfile --
web: waitress-serve --port=$PORT web:make
-- requirements.txt --
flask==3.1.0
waitress==3.0.2
-- web.py --
from flask import Flask
def make():
    return Flask(__name__)
`, "start/callable-missing"},
	{"factory of waitress with call", `-- Procfile --
web: waitress-serve --port=$PORT --call web:make
-- requirements.txt --
flask==3.1.0
waitress==3.0.2
-- web.py --
from flask import Flask
def make():
    return Flask(__name__)
`, ""},
	{"decorated function is an application", `-- Procfile --
web: gunicorn -b 0.0.0.0:$PORT web:app
-- requirements.txt --
gunicorn==23.0.0
-- web.py --
def page(fn):
    def app(environ, start_response):
        start_response("200 OK", [])
        return [fn().encode()]
    return app

@page
def app():
    return "dome"
`, ""},
	{"function with several arguments", `-- Procfile --
web: gunicorn -b 0.0.0.0:$PORT web:app
-- requirements.txt --
gunicorn==23.0.0
-- web.py --
def app(*args):
    args[1]("200 OK", [])
    return [b""]
`, ""},
	{"uvicorn finds the factory itself", `-- Procfile --
web: uvicorn web:make --host 0.0.0.0 --port $PORT
-- requirements.txt --
uvicorn==0.35.0
starlette==0.47.0
-- web.py --
from starlette.applications import Starlette
def make():
    return Starlette()
`, ""},
	{"replaced afterwards", `-- Procfile --
web: gunicorn -b 0.0.0.0:$PORT web:app
-- requirements.txt --
flask==3.1.0
gunicorn==23.0.0
-- web.py --
from flask import Flask
def app():
    return Flask(__name__)
app = app()
`, ""},
	{"a helper on loopback beside the public server", `-- Procfile --
web: node server.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"}}
-- helper.py --
import http.server
http.server.HTTPServer(("127.0.0.1", 9000), http.server.SimpleHTTPRequestHandler).serve_forever()
-- server.js --
const { spawn } = require('child_process');
spawn('python3', ['helper.py'], { stdio: 'inherit' });
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"an asgi worker in the settings of gunicorn knows factories", `-- Procfile --
web: gunicorn web:make
-- gunicorn.conf.py --
import os
bind = "0.0.0.0:" + os.environ.get("PORT", "8000")
worker_class = "uvicorn.workers.UvicornWorker"
-- web.py --
from starlette.applications import Starlette
def make():
    return Starlette()
-- requirements.txt --
gunicorn==23.0.0
uvicorn==0.35.0
starlette==0.47.0
`, ""},
	{"a script of checks that ends by itself is run before", `-- Procfile --
web: python run.py
-- run.py --
import subprocess
import sys
if subprocess.run([sys.executable, "-m", "compileall", "-q", "."]).returncode:
    sys.exit("does not compile")
subprocess.check_call([sys.executable, "prepare.py"])
from web import app
from waitress import serve
import os
serve(app, host="0.0.0.0", port=int(os.environ.get("PORT", 8000)))
-- prepare.py --
print("prepared")
-- web.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"ok"]
-- requirements.txt --
waitress==3.0.2
`, ""},
	{"a setting with dots that a program takes by itself", `-- compose.yaml --
services:
  web:
    build: .
    environment:
      discovery.type: single-node
      PORT: "3000"
    ports: ["3000:3000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000);
`, ""},
	{"a folder that a build fills", `-- Procfile --
web: node src/server.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"},"scripts":{"postinstall":"node make.js"}}
-- make.js --
require('fs').mkdirSync('src/lib', { recursive: true });
require('fs').writeFileSync('src/lib/made.js', 'exports.log = () => {};');
-- src/server.js --
const { log } = require('./lib/made');
require('http').createServer((q, s) => { log(q.url); s.end(); }).listen(process.env.PORT || 3000);
`, ""},
	{"a site that is worked on", `-- Procfile --
web: react-router dev --port $PORT
-- package.json --
{"name":"dome","engines":{"node":"24.x"},"dependencies":{"@react-router/dev":"7.9.0"}}
`, "start/dev-server"},
	{"a program that builds anew", `-- Procfile --
web: air
-- go.mod --
module example.org/dome
go 1.25
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() {
	p := os.Getenv("PORT")
	if p == "" {
		p = "8080"
	}
	http.ListenAndServe(":"+p, nil)
}
`, "start/reload"},
	{"nest that watches", `-- Procfile --
web: nest start --watch
-- package.json --
{"name":"dome","engines":{"node":"24.x"},"dependencies":{"@nestjs/core":"11.0.0","@nestjs/cli":"11.0.0"}}
-- src/main.ts --
import { NestFactory } from '@nestjs/core';
class Dome {}
NestFactory.create(Dome).then((a) => a.listen(process.env.PORT || 3000));
`, "start/reload"},
	{"nest that does not", `-- Procfile --
web: nest start
-- package.json --
{"name":"dome","engines":{"node":"24.x"},"dependencies":{"@nestjs/core":"11.0.0","@nestjs/cli":"11.0.0"}}
-- src/main.ts --
import { NestFactory } from '@nestjs/core';
class Dome {}
NestFactory.create(Dome).then((a) => a.listen(process.env.PORT || 3000));
`, ""},
	{"an import of a file that is not there", `-- Procfile --
web: node src/server.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"}}
-- src/server.js --
const { log } = require('./lib/logger');
const http = require('http');
http.createServer((q, s) => { log(q.url); s.end(); }).listen(process.env.PORT || 3000);
`, "start/import-missing"},
	{"an import in a branch of tests", `-- Procfile --
web: node src/server.js
-- package.json --
{"name":"dome","engines":{"node":"24.x"}}
-- src/server.js --
const http = require('http');
let log = console.log;
if (process.env.NODE_ENV === 'test') {
  log = require('./testing/silent');
}
try { log = require('./private/logger'); } catch (e) { }
http.createServer((q, s) => { log(q.url); s.end(); }).listen(process.env.PORT || 3000);
`, ""},
	{"a name with a dash", `-- compose.yaml --
services:
  web:
    build: .
    environment:
      TELESCOPE-KEY: "x"
      PORT: "3000"
    ports: ["3000:3000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000);
`, "env/invalid-name"},
	{"go literal for the metrics on loopback", `-- Procfile --
web: ./bin/dome
-- go.mod --
module example.org/dome
go 1.25
-- main.go --
package main

import (
	"net/http"
	"os"
)

func port() string {
	if p := os.Getenv("PORT"); p != "" {
		return p
	}
	return "8080"
}

func main() {
	go http.ListenAndServe("127.0.0.1:6060", nil)
	http.ListenAndServe(":"+port(), nil)
}
`, ""},
	{"compose mapping to another number", `-- compose.yaml --
services:
  web:
    build: .
    ports: ["8080:80"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, "port/mismatch"},
	{"compose mapping under its environment", `-- compose.yaml --
services:
  web:
    build: .
    environment:
      PORT: 8000
    ports: ["8080:8000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"the start script names a file that is not there", `-- package.json --
{"name":"dome","engines":{"node":"24.x"},"scripts":{"start":"node lib/server.js"}}
-- src/server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000);
`, "start/target-missing"},
	{"ports in the long form", `-- compose.yaml --
services:
  web:
    build:
      context: ./web
    environment:
      - PORT=5000
    ports:
      - target: 3000
        published: 8080
-- web/Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- web/package.json --
{"name":"dome"}
-- web/server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, "port/mismatch"},
	{"a variable of the shell decides", `-- compose.yaml --
services:
  web:
    build: .
    environment:
      - PORT
    ports: ["8080:5000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"one of two mapped ports", `-- compose.yaml --
services:
  web:
    build: .
    ports:
      - "127.0.0.1:9229:9229"
      - 8080:3000
  db:
    image: postgres:17
    ports: ["5432:5432"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"another command than that of the image", `-- compose.yaml --
services:
  web:
    build: .
    command: node other.js
    ports: ["8080:4000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
-- other.js --
require('http').createServer((q, s) => s.end()).listen(4000, '0.0.0.0');
`, ""},
	{"a number alone", `-- compose.yaml --
services:
  web:
    build: .
    ports: [3000]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"a proxy in front on the same network", `-- compose.yaml --
services:
  proxy:
    image: nginx:1.29
    ports: ["80:80"]
  web:
    build: .
    expose: ["3000"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
	{"the built output of another package", `-- Procfile --
web: node web/server.js
-- package.json --
{"name":"all","private":true,"engines":{"node":"24.x"},"workspaces":["web","shared"],"scripts":{"start":"node web/server.js"}}
-- web/package.json --
{"name":"web","scripts":{"start":"node server.js"}}
-- web/server.js --
const { log } = require('../shared/dist/log.js');
require('http').createServer((q, s) => { log(q.url); s.end(); }).listen(process.env.PORT || 3000);
-- shared/package.json --
{"name":"shared","scripts":{"build":"tsc"},"devDependencies":{"typescript":"5.9.2"}}
-- shared/src/log.ts --
export const log = (x: string) => console.log(x);
`, ""},
	{"a port for a debugger only", `-- compose.yaml --
services:
  proxy:
    image: nginx:1.29
    ports: ["80:80"]
  web:
    build: .
    ports: ["9229:9229"]
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
CMD ["node", "server.js"]
-- package.json --
{"name":"dome"}
-- server.js --
require('http').createServer((q, s) => s.end()).listen(process.env.PORT || 3000, '0.0.0.0');
`, ""},
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
	for name, script := range map[string]string{"variables": double, "arguments": calls, "loops": "a=$PORT\nwhile [ 1 = 1 ]; do while [ 1 = 1 ]; do while [ 1 = 1 ]; do a=$a$a; done; done; done\n"} {
		t.Run(name, func(t *testing.T) {
			tree := "-- Procfile --\nweb: sh run.sh\n-- run.sh --\n" + script + "if [ \"${a%%1*}\" = x ]; then PORT=1; fi\nexec python3 -m http.server $a\n"
			if got := allOutcomes(run(t, plant(t, tree), map[string]string{"PORT": "8000"}).Components[0].Starts); got != "unknown" {
				t.Errorf("the survey says %s", got)
			}
		})
	}
}

// TestTrailLeadsToTheCall asks that a finding which stands where a value is made leads
// to the call that listens, whether values tell it or going through the program does.
func TestTrailLeadsToTheCall(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ tree, rule, from string }{
		"a number in a map":             {"-- package.json --\n{\"name\":\"a\",\"scripts\":{\"start\":\"node index.js\"}}\n-- config.js --\nclass Config {\n  #v = new Map(Object.entries({ port: 5203 }));\n  get(k) { return this.#v.get(k); }\n}\nmodule.exports = Config;\n-- index.js --\nconst Config = require('./config');\nconst cfg = new Config();\nrequire('http').createServer((q, r) => r.end()).listen(cfg.get('port'));\n", "port/literal", "index.js"},
		"a variable whose name is made": {"-- Procfile --\nweb: python main.py\n-- settings.py --\nimport os\n\n\ndef read(key):\n    return os.environ.get(\"_\".join([\"SKY\", key.upper()]), \"8452\")\n-- main.py --\nfrom http.server import HTTPServer, BaseHTTPRequestHandler\nfrom settings import read\nHTTPServer((\"\", int(read(\"port\"))), BaseHTTPRequestHandler).serve_forever()\n", "port/other-name", "main.py"},
	} {
		t.Run(name, func(t *testing.T) {
			for _, f := range run(t, plant(t, c.tree), nil).Findings {
				if f.Rule != c.rule {
					continue
				}
				if len(f.Trail) == 0 || f.Trail[0].At.File != c.from {
					t.Errorf("%s at %v has the trail %v", f.Rule, f.Where, f.Trail)
				}
				return
			}
			t.Errorf("no %s", c.rule)
		})
	}
}
