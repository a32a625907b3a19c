package check_test

import (
	"slices"
	"strings"
	"testing"
)

// outcomes are servers whose toolchains are seldom at hand, with what they do
// under environments as their own documentation says: one line each,
// NAME=VALUE … => outcome.
var outcomes = []struct{ name, tree, want string }{
	{"Axum", cargo("axum tokio") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
use axum::{routing::get, Router};
use std::net::SocketAddr;

#[tokio::main]
async fn main() {
    let app = Router::new().route("/", get(|| async { "clear" }));
    let port: u16 = std::env::var("PORT").unwrap_or("3000".into()).parse().unwrap();
    let addr = SocketAddr::from(([0, 0, 0, 0], port));
    let listener = tokio::net::TcpListener::bind(addr).await.unwrap();
    axum::serve(listener, app).await.unwrap();
}
`, ` => any 3000
PORT=5123 => any 5123
PORT=x => exits
PORT= => exits`},
	{"Actix, a number on loopback", cargo("actix-web") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
use actix_web::{web, App, HttpServer};

#[actix_web::main]
async fn main() -> std::io::Result<()> {
    HttpServer::new(|| App::new().route("/", web::get().to(|| async { "clear" })))
        .workers(2)
        .bind(("127.0.0.1", 8080))?
        .run()
        .await
}
`, "PORT=5123 => loopback 8080"},
	{"warp", cargo("warp tokio") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
use warp::Filter;

#[tokio::main]
async fn main() {
    let routes = warp::any().map(|| "clear");
    let port = std::env::var("PORT").ok().and_then(|p| p.parse().ok()).unwrap_or(3030);
    warp::serve(routes).run(([0, 0, 0, 0], port)).await;
}
`, " => any 3030\nPORT=5123 => any 5123\nPORT=x => any 3030"},
	{"Rocket and its file", cargo("rocket") + `-- Procfile --
web: ./target/release/dome
-- Rocket.toml --
[default]
port = 8001

[release]
address = "0.0.0.0"
-- src/main.rs --
#[macro_use] extern crate rocket;

#[launch]
fn rocket() -> _ { rocket::build().mount("/", routes![index]) }
`, "PORT=5123 => any 8001\nROCKET_PORT=9001 => any 9001\nROCKET_ADDRESS=127.0.0.1 => loopback 8001"},
	{"Rocket with a figment", cargo("rocket") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
#[rocket::main]
async fn main() -> Result<(), rocket::Error> {
    let port: u16 = std::env::var("PORT").unwrap_or_else(|_| "8000".into()).parse().unwrap();
    let figment = rocket::Config::figment().merge(("port", port)).merge(("address", "0.0.0.0"));
    rocket::custom(figment).mount("/", routes![index]).launch().await?;
    Ok(())
}
`, " => any 8000\nPORT=5123 => any 5123\nPORT=5123 ROCKET_PORT=1 => any 5123"},
	{"a parser of arguments that is derived", cargo("clap tokio axum") + `-- Procfile --
web: ./target/release/dome --host 0.0.0.0
-- src/main.rs --
use clap::Parser;

#[derive(Parser)]
#[command(version)]
struct Args {
    /// where it listens
    #[arg(short, long, env = "DOME_PORT", default_value_t = 8080)]
    port: u16,
    #[arg(long, default_value = "127.0.0.1")]
    host: std::net::IpAddr,
}

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let args = Args::parse();
    let l = tokio::net::TcpListener::bind((args.host, args.port)).await?;
    axum::serve(l, app()).await?;
    Ok(())
}
`, ` => any 8080
DOME_PORT=5123 => any 5123
DOME_PORT=x => exits
PORT=5123 => any 8080`},

	{"Kestrel by itself", dotnet("") + `-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
app.Run();
`,
		`PORT=5123 => loopback 5000
ASPNETCORE_URLS=http://+:8080 => any 8080
DOTNET_URLS=http://localhost:1;http://*:2 => loopback 1
ASPNETCORE_HTTP_PORTS=8081 => any 8081
ASPNETCORE_URLS=http://0.0.0.0:1 ASPNETCORE_HTTP_PORTS=2 => any 1`},
	{"an address to run with", dotnet("") + `-- Program.cs --
var app = WebApplication.CreateBuilder(args).Build();
var port = Environment.GetEnvironmentVariable("PORT") ?? "8080";
app.Run($"http://0.0.0.0:{port}");
`,
		" => any 8080\nPORT=5123 => any 5123\nPORT=5123 ASPNETCORE_URLS=http://+:1 => any 5123"},
	{"UseUrls with a number that is tried", dotnet("") + `-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
int port = int.TryParse(Environment.GetEnvironmentVariable("PORT"), out var p) ? p : 3000;
builder.WebHost.UseUrls($"http://*:{port}");
builder.Build().Run();
`,
		` => any 3000
PORT=5123 => any 5123
PORT=x => any 3000
PORT= => any 3000`},
	{"UseUrls where a variable is set", dotnet("") + `-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
if (Environment.GetEnvironmentVariable("PORT") is { } port)
{
    builder.WebHost.UseUrls($"http://0.0.0.0:{port}");
}
builder.Build().Run();
`,
		" => loopback 5000\nPORT=5123 => any 5123"},
	{"endpoints of Kestrel in code", dotnet("") + `-- Program.cs --
using System.Net;
var builder = WebApplication.CreateBuilder(args);
var port = builder.Configuration.GetValue<int>("Port", 8082);
builder.WebHost.ConfigureKestrel(o => o.Listen(builder.Environment.IsDevelopment() ? IPAddress.Loopback : IPAddress.Any, port));
builder.Build().Run();
`,
		` => any 8082
PORT=5123 => any 5123
ASPNETCORE_ENVIRONMENT=Development => loopback 8082
PORT=1 ASPNETCORE_URLS=http://+:2 => any 1`},
	{"settings in layers", dotnet("") + `-- appsettings.json --
{ "Urls": "http://*:6000", "Dome": { "Sky": 1 } }
-- appsettings.Development.json --
{ "Urls": "http://localhost:6001" }
-- Program.cs --
WebApplication.Create(args).Run();
`,
		" => any 6000\nASPNETCORE_ENVIRONMENT=Development => loopback 6001\nASPNETCORE_URLS=http://localhost:1 => loopback 1"},
	{"endpoints of Kestrel in settings", dotnet("") + `-- appsettings.json --
{ "Kestrel": { "Endpoints": { "Http": { "Url": "http://0.0.0.0:6002" } } } }
-- Program.cs --
WebApplication.Create(args).Run();
`,
		"ASPNETCORE_URLS=http://localhost:1 => any 6002"},
	{"a flag", dotnet("--urls http://0.0.0.0:$PORT") + "-- Program.cs --\nWebApplication.Create(args).Run();\n", "PORT=5123 => any 5123"},
	{"a host of the older kind, and a class", dotnet("") + `-- Program.cs --
public class Program
{
    public static void Main(string[] args) => CreateHostBuilder(args).Build().Run();

    public static IHostBuilder CreateHostBuilder(string[] args) =>
        Host.CreateDefaultBuilder(args).ConfigureWebHostDefaults(web => web.UseStartup<Startup>().UseUrls(Settings.Url));
}
-- Settings.cs --
public static class Settings
{
    private const string Host = "0.0.0.0";
    private static readonly string Port = Environment.GetEnvironmentVariable("PORT") ?? "5001";
    public static string Url => $"http://{Host}:{Port}";
}
`,
		" => any 5001\nPORT=5123 => any 5123"},

	{"Bandit under a supervisor", mix("bandit") + `-- Procfile --
web: mix run --no-halt
-- lib/dome/application.ex --
defmodule Dome.Application do
  use Application

  @impl true
  def start(_type, _args) do
    children = [
      {Bandit, plug: Dome.Router, scheme: :http, port: port(), ip: {0, 0, 0, 0}}
    ]

    Supervisor.start_link(children, strategy: :one_for_one)
  end

  defp port do
    case System.fetch_env("PORT") do
      {:ok, p} -> String.to_integer(p)
      :error -> 4001
    end
  end
end
`,
		" => any 4001\nPORT=5123 => any 5123\nPORT=x => exits"},
	{"Cowboy on loopback", mix("plug_cowboy") + `-- Procfile --
web: mix run --no-halt
-- lib/dome/application.ex --
defmodule Dome.Application do
  def start(_type, _args) do
    children = [{Plug.Cowboy, scheme: :http, plug: Dome.Router, options: [port: 4000, ip: :loopback]}]
    Supervisor.start_link(children, strategy: :one_for_one)
  end
end
`,
		"PORT=5123 => loopback 4000"},
	{"the endpoint of Phoenix", mix("phoenix") + "-- Procfile --\nweb: mix phx.server\n" + phoenix, ` => loopback 4000
MIX_ENV=prod => any 4000
MIX_ENV=prod PORT=5123 => any 5123
MIX_ENV=prod PORT=x => exits`},
	{"a release of Phoenix", mix("phoenix") + "-- Procfile --\nweb: _build/prod/rel/dome/bin/dome start\n" + phoenix, "PHX_SERVER=true PORT=5123 => any 5123\nPORT=5123 => skipped"},

	{"Ktor's file", ktor + `-- src/main/resources/application.conf --
ktor {
  deployment {
    port = 8080 // here
    port = ${?PORT}
    host = "127.0.0.1"
  }
  application { modules = [ AppKt.module ] }
}
`, " => loopback 8080\nPORT=5123 => loopback 5123\nPORT=x => exits"},
	{"Ktor's file in YAML", ktor + `-- src/main/resources/application.yaml --
ktor:
  deployment:
    port: "$PORT:8081"
`, " => any 8081\nPORT=5123 => any 5123"},
	{"Micronaut", micronaut + `-- src/main/resources/application.yml --
micronaut:
  server:
    port: ${PORT:8082}
`, " => any 8082\nPORT=5123 => any 5123\nMICRONAUT_SERVER_PORT=1 => any 1"},
	{"Spring, set by the program", spring + `-- src/main/resources/application.properties --
server.port=8083
-- src/main/java/dome/Dome.java --
package dome;

import org.springframework.boot.SpringApplication;

public class Dome {
  public static void main(String[] args) {
    System.setProperty("server.port", System.getenv().getOrDefault("PORT", "8084"));
    SpringApplication.run(Dome.class, args);
  }
}
`, " => any 8084\nPORT=5123 => any 5123\nPORT=5123 SERVER_PORT=1 => any 5123"},
	{"Spring, a profile that a flag chooses", strings.Replace(spring, "dome.jar", "dome.jar --spring.profiles.active=night", 1) + `-- src/main/resources/application.properties --
server.port=8083
-- src/main/resources/application-night.properties --
server.port=${PORT:8085}
server.address=127.0.0.1
`, " => loopback 8085\nPORT=5123 => loopback 5123"},

	{"Play", "-- build.gradle --\nplugins { id 'org.playframework.play' version '0.14.0' }\ndependencies { implementation 'org.playframework:play-server_2.13:3.0.9' }\n-- app/Dome.java --\nclass Dome {}\n-- conf/application.conf --\nplay.server {\n  http.port = 9001\n  http.port = ${?PORT}\n}\n-- Procfile --\nweb: java -cp 'lib/*' play.core.server.ProdServerStart\n", " => any 9001\nPORT=5123 => any 5123"},
	{"a file for Hypercorn", "-- requirements.txt --\nhypercorn==0.17.3\n-- app.py --\nasync def app(scope, receive, send):\n    pass\n-- hypercorn.toml --\nbind = [\"0.0.0.0:8001\"]\n-- Procfile --\nweb: hypercorn -c hypercorn.toml app:app\n", "PORT=5123 => any 8001"},
	{"a file of Python for Hypercorn", "-- requirements.txt --\nhypercorn==0.17.3\n-- app.py --\nasync def app(scope, receive, send):\n    pass\n-- conf.py --\nimport os\nbind = \"0.0.0.0:\" + os.environ.get(\"PORT\", \"8002\")\n-- Procfile --\nweb: hypercorn -c file:conf.py app:app\n", " => any 8002\nPORT=5123 => any 5123"},
	{"nginx by itself", `-- index.html --
<p>clear</p>
-- Dockerfile --
FROM nginx:1.29
COPY index.html /usr/share/nginx/html/
`, "PORT=5123 => any 80"},
	{"nginx with its own settings", `-- index.html --
<p>clear</p>
-- deploy/dome.conf --
# listen 1;
server {
  listen 127.0.0.1:8443 ssl;
  listen [::]:8080 default_server;
  location / { root /srv; }
}
-- Dockerfile --
FROM nginx:1.29
COPY deploy/dome.conf /etc/nginx/conf.d/default.conf
COPY index.html /srv/
`, "PORT=5123 => any 8080"},
	{"nginx with a template", `-- index.html --
<p>clear</p>
-- templates/default.conf.template --
server { listen ${PORT}; root /srv; }
-- Dockerfile --
FROM nginx:1.29
COPY templates /etc/nginx/templates/
COPY index.html /srv/
`, "PORT=5123 => any 5123\n => exits"},
	{"nginx whose settings a command changes", `-- index.html --
<p>clear</p>
-- Dockerfile --
FROM nginx:1.29
RUN sed -i s/80/81/ /etc/nginx/conf.d/default.conf
COPY index.html /srv/
`, "PORT=5123 => unknown"},
	{"Apache of PHP", `-- public/index.php --
<?php echo 'clear';
-- composer.json --
{}
-- Dockerfile --
FROM php:8.4-apache
COPY . /var/www/html
`, "PORT=5123 => any 80"},
	{"Apache of PHP with another port", `-- public/index.php --
<?php echo 'clear';
-- composer.json --
{}
-- Dockerfile --
FROM php:8.4-apache
RUN sed -i 's/Listen 80/Listen ${PORT}/' /etc/apache2/ports.conf
COPY . /var/www/html
`, "PORT=5123 => any 5123\n => exits"},
	{"Apache with settings", `-- index.html --
<p>clear</p>
-- httpd.conf --
ServerRoot "/usr/local/apache2"
Listen 8088
-- Dockerfile --
FROM httpd:2.4
COPY httpd.conf /usr/local/apache2/conf/httpd.conf
COPY index.html /usr/local/apache2/htdocs/
`, "PORT=5123 => any 8088"},
	{"FastCGI of PHP", `-- public/index.php --
<?php echo 'clear';
-- composer.json --
{}
-- Dockerfile --
FROM php:8.4-fpm
COPY . /var/www/html
`, "PORT=5123 => any 9000"},
}

func cargo(crates string) string {
	var b strings.Builder
	b.WriteString(`-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2024"

[dependencies]
`)
	for _, c := range strings.Fields(crates) {
		b.WriteString(c + " = \"1\"\n")
	}
	return b.String()
}

func dotnet(flags string) string {
	return `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web">
  <PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup>
</Project>
-- Procfile --
web: dotnet dome.dll ` + flags + "\n"
}

func mix(dep string) string {
	return `-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project

  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.18", deps: [{:` + dep + `, "~> 1.0"}]]
  def application, do: [mod: {Dome.Application, []}]
end
`
}

const phoenix = `-- lib/dome_web/endpoint.ex --
defmodule DomeWeb.Endpoint do
  use Phoenix.Endpoint, otp_app: :dome
end
-- config/config.exs --
import Config
config :dome, DomeWeb.Endpoint, url: [host: "localhost"], adapter: Bandit.PhoenixAdapter
import_config "#{config_env()}.exs"
-- config/dev.exs --
import Config
config :dome, DomeWeb.Endpoint, http: [ip: {127, 0, 0, 1}, port: 4000]
-- config/runtime.exs --
import Config

if System.get_env("PHX_SERVER") do
  config :dome, DomeWeb.Endpoint, server: true
end

if config_env() == :prod do
  port = String.to_integer(System.get_env("PORT") || "4000")
  config :dome, DomeWeb.Endpoint, http: [ip: {0, 0, 0, 0, 0, 0, 0, 0}, port: port]
end
`

const ktor = `-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.2.0"
  id("io.ktor.plugin") version "3.2.0"
}
application { mainClass.set("io.ktor.server.netty.EngineMain") }
dependencies { implementation("io.ktor:ktor-server-netty:3.2.0") }
-- src/main/kotlin/App.kt --
import io.ktor.server.application.Application

fun Application.module() {}
-- Procfile --
web: java -jar build/libs/dome-all.jar
`

const micronaut = `-- build.gradle --
plugins { id 'io.micronaut.application' version '4.5.0' }
application { mainClass = 'dome.Dome' }
dependencies { implementation 'io.micronaut:micronaut-http-server-netty:4.9.0' }
-- src/main/java/dome/Dome.java --
package dome;

import io.micronaut.runtime.Micronaut;

public class Dome {
  public static void main(String[] args) { Micronaut.run(Dome.class, args); }
}
-- Procfile --
web: java -jar build/libs/dome-all.jar
`

const spring = `-- pom.xml --
<project>
  <parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>4.0.0</version></parent>
  <groupId>dome</groupId><artifactId>dome</artifactId><version>1</version>
  <dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
  <build><finalName>dome</finalName><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build>
</project>
-- Procfile --
web: java -jar target/dome.jar
`

func TestOutcomes(t *testing.T) {
	t.Parallel()
	for _, c := range append(outcomes[:len(outcomes):len(outcomes)], goLibraries...) {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}

// outcome plants a tree and compares what its process does under each line of
// NAME=VALUE … => outcome.
func outcome(t *testing.T, tree, list string) {
	t.Helper()
	dir := plant(t, tree)
	for line := range strings.SplitSeq(list, "\n") {
		env, want, _ := strings.Cut(line, "=> ")
		with := map[string]string{"SKY": "clear"}
		for _, f := range strings.Fields(env) {
			k, v, _ := strings.Cut(f, "=")
			with[k] = v
		}
		var got []string
		for _, comp := range run(t, dir, with).Components {
			for _, s := range comp.Starts {
				if s.Source != "process file" && s.Source != "container" {
					continue
				}
				for _, l := range s.Listeners {
					if l.View.Under.Outcome != "skipped" || want == "skipped" { // another branch is taken
						got = append(got, say(*l.View.Under))
					}
				}
			}
		}
		slices.Sort(got)
		if len(got) > 1 && got[0] == "exits" && got[len(got)-1] == "exits" { // with all of its listeners
			got = got[:1]
		}
		if strings.Join(got, " & ") != want {
			t.Errorf("under %q it %v, not %s", env, got, want)
		}
	}
}
