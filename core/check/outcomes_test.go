package check_test

import (
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
`, " => any 3000\nPORT=5123 => any 5123\nPORT=x => exits\nPORT= => exits"},
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
`, " => any 8080\nDOME_PORT=5123 => any 5123\nDOME_PORT=x => exits\nPORT=5123 => any 8080"},

	{"Kestrel by itself", dotnet("") + "-- Program.cs --\nvar app = WebApplication.CreateBuilder(args).Build();\napp.Run();\n",
		"PORT=5123 => loopback 5000\nASPNETCORE_URLS=http://+:8080 => any 8080\nDOTNET_URLS=http://localhost:1;http://*:2 => loopback 1\nASPNETCORE_HTTP_PORTS=8081 => any 8081\nASPNETCORE_URLS=http://0.0.0.0:1 ASPNETCORE_HTTP_PORTS=2 => any 1"},
	{"an address to run with", dotnet("") + "-- Program.cs --\nvar app = WebApplication.CreateBuilder(args).Build();\nvar port = Environment.GetEnvironmentVariable(\"PORT\") ?? \"8080\";\napp.Run($\"http://0.0.0.0:{port}\");\n",
		" => any 8080\nPORT=5123 => any 5123\nPORT=5123 ASPNETCORE_URLS=http://+:1 => any 5123"},
	{"UseUrls with a number that is tried", dotnet("") + "-- Program.cs --\nvar builder = WebApplication.CreateBuilder(args);\nint port = int.TryParse(Environment.GetEnvironmentVariable(\"PORT\"), out var p) ? p : 3000;\nbuilder.WebHost.UseUrls($\"http://*:{port}\");\nbuilder.Build().Run();\n",
		" => any 3000\nPORT=5123 => any 5123\nPORT=x => any 3000\nPORT= => any 3000"},
	{"UseUrls where a variable is set", dotnet("") + "-- Program.cs --\nvar builder = WebApplication.CreateBuilder(args);\nif (Environment.GetEnvironmentVariable(\"PORT\") is { } port)\n{\n    builder.WebHost.UseUrls($\"http://0.0.0.0:{port}\");\n}\nbuilder.Build().Run();\n",
		" => loopback 5000\nPORT=5123 => any 5123"},
	{"endpoints of Kestrel in code", dotnet("") + "-- Program.cs --\nusing System.Net;\nvar builder = WebApplication.CreateBuilder(args);\nvar port = builder.Configuration.GetValue<int>(\"Port\", 8082);\nbuilder.WebHost.ConfigureKestrel(o => o.Listen(builder.Environment.IsDevelopment() ? IPAddress.Loopback : IPAddress.Any, port));\nbuilder.Build().Run();\n",
		" => any 8082\nPORT=5123 => any 5123\nASPNETCORE_ENVIRONMENT=Development => loopback 8082\nPORT=1 ASPNETCORE_URLS=http://+:2 => any 1"},
	{"settings in layers", dotnet("") + "-- appsettings.json --\n{ \"Urls\": \"http://*:6000\", \"Dome\": { \"Sky\": 1 } }\n-- appsettings.Development.json --\n{ \"Urls\": \"http://localhost:6001\" }\n-- Program.cs --\nWebApplication.Create(args).Run();\n",
		" => any 6000\nASPNETCORE_ENVIRONMENT=Development => loopback 6001\nASPNETCORE_URLS=http://localhost:1 => loopback 1"},
	{"endpoints of Kestrel in settings", dotnet("") + "-- appsettings.json --\n{ \"Kestrel\": { \"Endpoints\": { \"Http\": { \"Url\": \"http://0.0.0.0:6002\" } } } }\n-- Program.cs --\nWebApplication.Create(args).Run();\n",
		"ASPNETCORE_URLS=http://localhost:1 => any 6002"},
	{"a flag", dotnet("--urls http://0.0.0.0:$PORT") + "-- Program.cs --\nWebApplication.Create(args).Run();\n", "PORT=5123 => any 5123"},
	{"a host of the older kind, and a class", dotnet("") + "-- Program.cs --\npublic class Program\n{\n    public static void Main(string[] args) => CreateHostBuilder(args).Build().Run();\n\n    public static IHostBuilder CreateHostBuilder(string[] args) =>\n        Host.CreateDefaultBuilder(args).ConfigureWebHostDefaults(web => web.UseStartup<Startup>().UseUrls(Settings.Url));\n}\n-- Settings.cs --\npublic static class Settings\n{\n    private const string Host = \"0.0.0.0\";\n    private static readonly string Port = Environment.GetEnvironmentVariable(\"PORT\") ?? \"5001\";\n    public static string Url => $\"http://{Host}:{Port}\";\n}\n",
		" => any 5001\nPORT=5123 => any 5123"},

	{"Bandit under a supervisor", mix("bandit") + "-- Procfile --\nweb: mix run --no-halt\n-- lib/dome/application.ex --\ndefmodule Dome.Application do\n  use Application\n\n  @impl true\n  def start(_type, _args) do\n    children = [\n      {Bandit, plug: Dome.Router, scheme: :http, port: port(), ip: {0, 0, 0, 0}}\n    ]\n\n    Supervisor.start_link(children, strategy: :one_for_one)\n  end\n\n  defp port do\n    case System.fetch_env(\"PORT\") do\n      {:ok, p} -> String.to_integer(p)\n      :error -> 4001\n    end\n  end\nend\n",
		" => any 4001\nPORT=5123 => any 5123\nPORT=x => exits"},
	{"Cowboy on loopback", mix("plug_cowboy") + "-- Procfile --\nweb: mix run --no-halt\n-- lib/dome/application.ex --\ndefmodule Dome.Application do\n  def start(_type, _args) do\n    children = [{Plug.Cowboy, scheme: :http, plug: Dome.Router, options: [port: 4000, ip: :loopback]}]\n    Supervisor.start_link(children, strategy: :one_for_one)\n  end\nend\n",
		"PORT=5123 => loopback 4000"},
	{"the endpoint of Phoenix", mix("phoenix") + "-- Procfile --\nweb: mix phx.server\n" + phoenix, " => loopback 4000\nMIX_ENV=prod => any 4000\nMIX_ENV=prod PORT=5123 => any 5123\nMIX_ENV=prod PORT=x => exits"},
	{"a release of Phoenix", mix("phoenix") + "-- Procfile --\nweb: _build/prod/rel/dome/bin/dome start\n" + phoenix, "PHX_SERVER=true PORT=5123 => any 5123\nPORT=5123 => skipped"},

	{"Ktor's file", ktor + "-- src/main/resources/application.conf --\nktor {\n  deployment {\n    port = 8080 // here\n    port = ${?PORT}\n    host = \"127.0.0.1\"\n  }\n  application { modules = [ AppKt.module ] }\n}\n", " => loopback 8080\nPORT=5123 => loopback 5123\nPORT=x => exits"},
	{"Ktor's file in YAML", ktor + "-- src/main/resources/application.yaml --\nktor:\n  deployment:\n    port: \"$PORT:8081\"\n", " => any 8081\nPORT=5123 => any 5123"},
	{"Micronaut", micronaut + "-- src/main/resources/application.yml --\nmicronaut:\n  server:\n    port: ${PORT:8082}\n", " => any 8082\nPORT=5123 => any 5123\nMICRONAUT_SERVER_PORT=1 => any 1"},
	{"Spring, set by the program", spring + "-- src/main/resources/application.properties --\nserver.port=8083\n-- src/main/java/dome/Dome.java --\npackage dome;\n\nimport org.springframework.boot.SpringApplication;\n\npublic class Dome {\n  public static void main(String[] args) {\n    System.setProperty(\"server.port\", System.getenv().getOrDefault(\"PORT\", \"8084\"));\n    SpringApplication.run(Dome.class, args);\n  }\n}\n", " => any 8084\nPORT=5123 => any 5123\nPORT=5123 SERVER_PORT=1 => any 5123"},
	{"Spring, a profile that a flag chooses", strings.Replace(spring, "dome.jar", "dome.jar --spring.profiles.active=night", 1) + "-- src/main/resources/application.properties --\nserver.port=8083\n-- src/main/resources/application-night.properties --\nserver.port=${PORT:8085}\nserver.address=127.0.0.1\n", " => loopback 8085\nPORT=5123 => loopback 5123"},

	{"nginx by itself", "-- index.html --\n<p>clear</p>\n-- Dockerfile --\nFROM nginx:1.29\nCOPY index.html /usr/share/nginx/html/\n", "PORT=5123 => any 80"},
	{"nginx with its own settings", "-- index.html --\n<p>clear</p>\n-- deploy/dome.conf --\n# listen 1;\nserver {\n  listen 127.0.0.1:8443 ssl;\n  listen [::]:8080 default_server;\n  location / { root /srv; }\n}\n-- Dockerfile --\nFROM nginx:1.29\nCOPY deploy/dome.conf /etc/nginx/conf.d/default.conf\nCOPY index.html /srv/\n", "PORT=5123 => any 8080"},
	{"nginx with a template", "-- index.html --\n<p>clear</p>\n-- templates/default.conf.template --\nserver { listen ${PORT}; root /srv; }\n-- Dockerfile --\nFROM nginx:1.29\nCOPY templates /etc/nginx/templates/\nCOPY index.html /srv/\n", "PORT=5123 => any 5123\n => exits"},
	{"nginx whose settings a command changes", "-- index.html --\n<p>clear</p>\n-- Dockerfile --\nFROM nginx:1.29\nRUN sed -i s/80/81/ /etc/nginx/conf.d/default.conf\nCOPY index.html /srv/\n", "PORT=5123 => unknown"},
	{"Apache of PHP", "-- public/index.php --\n<?php echo 'clear';\n-- composer.json --\n{}\n-- Dockerfile --\nFROM php:8.4-apache\nCOPY . /var/www/html\n", "PORT=5123 => any 80"},
	{"Apache of PHP with another port", "-- public/index.php --\n<?php echo 'clear';\n-- composer.json --\n{}\n-- Dockerfile --\nFROM php:8.4-apache\nRUN sed -i 's/Listen 80/Listen ${PORT}/' /etc/apache2/ports.conf\nCOPY . /var/www/html\n", "PORT=5123 => any 5123\n => exits"},
	{"Apache with settings", "-- index.html --\n<p>clear</p>\n-- httpd.conf --\nServerRoot \"/usr/local/apache2\"\nListen 8088\n-- Dockerfile --\nFROM httpd:2.4\nCOPY httpd.conf /usr/local/apache2/conf/httpd.conf\nCOPY index.html /usr/local/apache2/htdocs/\n", "PORT=5123 => any 8088"},
	{"FastCGI of PHP", "-- public/index.php --\n<?php echo 'clear';\n-- composer.json --\n{}\n-- Dockerfile --\nFROM php:8.4-fpm\nCOPY . /var/www/html\n", "PORT=5123 => any 9000"},
}

func cargo(crates string) string {
	var b strings.Builder
	b.WriteString("-- Cargo.toml --\n[package]\nname = \"dome\"\nversion = \"0.1.0\"\nedition = \"2024\"\n\n[dependencies]\n")
	for _, c := range strings.Fields(crates) {
		b.WriteString(c + " = \"1\"\n")
	}
	return b.String()
}

func dotnet(flags string) string {
	return "-- dome.csproj --\n<Project Sdk=\"Microsoft.NET.Sdk.Web\">\n  <PropertyGroup><TargetFramework>net10.0</TargetFramework></PropertyGroup>\n</Project>\n-- Procfile --\nweb: dotnet dome.dll " + flags + "\n"
}

func mix(dep string) string {
	return "-- mix.exs --\ndefmodule Dome.MixProject do\n  use Mix.Project\n\n  def project, do: [app: :dome, version: \"0.1.0\", elixir: \"~> 1.18\", deps: [{:" + dep + ", \"~> 1.0\"}]]\n  def application, do: [mod: {Dome.Application, []}]\nend\n"
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

const ktor = "-- build.gradle.kts --\nplugins {\n  kotlin(\"jvm\") version \"2.2.0\"\n  id(\"io.ktor.plugin\") version \"3.2.0\"\n}\napplication { mainClass.set(\"io.ktor.server.netty.EngineMain\") }\ndependencies { implementation(\"io.ktor:ktor-server-netty:3.2.0\") }\n-- src/main/kotlin/App.kt --\nimport io.ktor.server.application.Application\n\nfun Application.module() {}\n-- Procfile --\nweb: java -jar build/libs/dome-all.jar\n"

const micronaut = "-- build.gradle --\nplugins { id 'io.micronaut.application' version '4.5.0' }\napplication { mainClass = 'dome.Dome' }\ndependencies { implementation 'io.micronaut:micronaut-http-server-netty:4.9.0' }\n-- src/main/java/dome/Dome.java --\npackage dome;\n\nimport io.micronaut.runtime.Micronaut;\n\npublic class Dome {\n  public static void main(String[] args) { Micronaut.run(Dome.class, args); }\n}\n-- Procfile --\nweb: java -jar build/libs/dome-all.jar\n"

const spring = "-- pom.xml --\n<project>\n  <parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>4.0.0</version></parent>\n  <groupId>dome</groupId><artifactId>dome</artifactId><version>1</version>\n  <dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>\n  <build><finalName>dome</finalName><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build>\n</project>\n-- Procfile --\nweb: java -jar target/dome.jar\n"

func TestOutcomes(t *testing.T) {
	t.Parallel()
	for _, c := range outcomes {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			dir := plant(t, c.tree)
			for line := range strings.SplitSeq(c.want, "\n") {
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
							got = append(got, say(*l.View.Under))
						}
					}
				}
				if len(got) != 1 || got[0] != want {
					t.Errorf("under %q it %v, not %s", env, got, want)
				}
			}
		})
	}
}
