package check_test

import "testing"

// compiled are programs in languages that are not gone through: where they listen is
// told from values alone, as the documentation of their frameworks has it.
var compiled = []told{
	{"axum env parse", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
axum = "0.8"
tokio = { version = "1", features = ["full"] }
-- src/main.rs --
use axum::{routing::get, Router};
use std::net::SocketAddr;

#[tokio::main]
async fn main() {
    let port: u16 = std::env::var("PORT").unwrap_or_else(|_| "4601".to_string()).parse().expect("PORT must be a number");
    let app = Router::new().route("/", get(|| async { "x" }));
    let addr = SocketAddr::from(([0, 0, 0, 0], port));
    let listener = tokio::net::TcpListener::bind(addr).await.unwrap();
    axum::serve(listener, app).await.unwrap();
}
-- Procfile --
web: ./target/release/dome
`, ` => any 4601
PORT=8601 => any 8601
PORT=x => exits`},
	{"actix config struct", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
actix-web = "4"
serde = { version = "1", features = ["derive"] }
envy = "0.4"
-- src/main.rs --
use actix_web::{get, App, HttpServer, Responder};
use serde::Deserialize;

#[derive(Deserialize, Debug)]
struct Config {
    #[serde(default = "default_host")]
    host: String,
    #[serde(default = "default_port")]
    port: u16,
}

fn default_host() -> String { "127.0.0.1".into() }
fn default_port() -> u16 { 4602 }

#[get("/")]
async fn index() -> impl Responder { "x" }

#[actix_web::main]
async fn main() -> std::io::Result<()> {
    let cfg = envy::from_env::<Config>().expect("configuration");
    HttpServer::new(|| App::new().service(index))
        .workers(2)
        .bind((cfg.host.as_str(), cfg.port))?
        .run()
        .await
}
-- Procfile --
web: ./target/release/dome
`, ` => loopback 4602
PORT=8602 HOST=0.0.0.0 => any 8602
PORT=x => exits`},
	{"actix match and const", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
actix-web = "4"
-- src/main.rs --
use actix_web::{web, App, HttpServer, HttpResponse};
use std::env;

const FALLBACK: u16 = 4603;

fn port() -> u16 {
    match env::var("PORT") {
        Ok(v) => v.parse().unwrap_or(FALLBACK),
        Err(_) => FALLBACK,
    }
}

#[actix_web::main]
async fn main() -> std::io::Result<()> {
    let host = if env::var("APP_ENV").map(|v| v == "production").unwrap_or(false) { "0.0.0.0" } else { "127.0.0.1" };
    HttpServer::new(|| App::new().route("/", web::get().to(|| async { HttpResponse::Ok().body("x") })))
        .bind(format!("{host}:{}", port()))?
        .run()
        .await
}
-- Procfile --
web: ./target/release/dome
`, ` => loopback 4603
PORT=8603 APP_ENV=production => any 8603
PORT=x => loopback 4603`},
	{"clap env derive", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
axum = "0.8"
tokio = "1"
clap = { version = "4", features = ["derive", "env"] }
-- src/main.rs --
use axum::{routing::get, Router};
use clap::Parser;
use std::net::IpAddr;

/// Dome server
#[derive(Parser, Debug)]
#[command(version, about)]
struct Args {
    /// Address
    #[arg(long, env = "DOME_HOST", default_value = "0.0.0.0")]
    host: IpAddr,
    #[arg(short, long, env, default_value_t = 4604)]
    port: u16,
}

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let args = Args::parse();
    let app = Router::new().route("/", get(|| async { "x" }));
    let listener = tokio::net::TcpListener::bind((args.host, args.port)).await?;
    axum::serve(listener, app).await?;
    Ok(())
}
-- Procfile --
web: ./target/release/dome
`, ` => any 4604
PORT=8604 => any 8604
DOME_HOST=127.0.0.1 => loopback 4604
PORT=x => exits`},
	{"rocket defaults", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
rocket = "0.5"
-- src/main.rs --
#[macro_use] extern crate rocket;

#[get("/")]
fn index() -> &'static str { "x" }

#[launch]
fn rocket() -> _ {
    rocket::build().mount("/", routes![index])
}
-- Procfile --
web: ./target/release/dome
`, ` => loopback 8000
ROCKET_PORT=8605 ROCKET_ADDRESS=0.0.0.0 => any 8605
PORT=8605 => loopback 8000`},
	{"rocket toml and figment", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
rocket = "0.5"
-- src/main.rs --
use rocket::{get, routes};

#[get("/")]
fn index() -> &'static str { "x" }

#[rocket::main]
async fn main() -> Result<(), rocket::Error> {
    let port: u16 = std::env::var("PORT").ok().and_then(|p| p.parse().ok()).unwrap_or(4606);
    let figment = rocket::Config::figment().merge(("port", port)).merge(("address", "0.0.0.0"));
    let _ = rocket::custom(figment).mount("/", routes![index]).launch().await?;
    Ok(())
}
-- Procfile --
web: ./target/release/dome
`, ` => any 4606
PORT=8606 => any 8606`},
	{"warp run tuple", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
warp = "0.3"
tokio = "1"
-- src/main.rs --
use warp::Filter;

#[tokio::main]
async fn main() {
    let hello = warp::path::end().map(|| "x");
    let port = std::env::var("PORT").map(|p| p.parse::<u16>().unwrap()).unwrap_or(3030);
    warp::serve(hello).run(([127, 0, 0, 1], port)).await;
}
-- Procfile --
web: ./target/release/dome
`, ` => loopback 3030
PORT=8607 => loopback 8607
PORT= => exits`},
	{"hyper loop", `-- Cargo.toml --
[package]
name = "dome"
version = "0.1.0"
edition = "2021"
[dependencies]
hyper = { version = "1", features = ["full"] }
hyper-util = "0.1"
tokio = "1"
-- src/main.rs --
use std::net::SocketAddr;
use tokio::net::TcpListener;

mod settings;

#[tokio::main]
async fn main() -> Result<(), Box<dyn std::error::Error + Send + Sync>> {
    let settings = settings::Settings::load()?;
    let addr: SocketAddr = settings.address().parse()?;
    let listener = TcpListener::bind(&addr).await?;
    loop {
        let (stream, _) = listener.accept().await?;
        drop(stream);
    }
}
-- Procfile --
web: ./target/release/dome
-- src/settings.rs --
use std::env;

pub struct Settings {
    pub host: String,
    pub port: u16,
}

impl Settings {
    pub fn load() -> Result<Self, std::num::ParseIntError> {
        let port = env::var("PORT").unwrap_or("4608".into()).parse::<u16>()?;
        Ok(Self { host: env::var("HOST").unwrap_or_else(|_| String::from("0.0.0.0")), port })
    }

    pub fn address(&self) -> String {
        format!("{}:{}", self.host, self.port)
    }
}
`, ` => any 4608
PORT=8608 => any 8608`},
	{"kestrel defaults", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
app.MapGet("/", () => "x");
app.Run();
-- Procfile --
web: dotnet out/dome.dll
`, ` => loopback 5000
ASPNETCORE_URLS=http://+:8611 => any 8611
ASPNETCORE_HTTP_PORTS=8611 => any 8611
PORT=8611 => loopback 5000`},
	{"run url from env", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
app.MapGet("/", () => "x");
var port = Environment.GetEnvironmentVariable("PORT") ?? "4612";
app.Run($"http://0.0.0.0:{port}");
-- Procfile --
web: dotnet out/dome.dll
`, ` => any 4612
PORT=8612 => any 8612`},
	{"use urls and config", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var port = builder.Configuration.GetValue<int>("Server:Port", 4613);
builder.WebHost.UseUrls($"http://*:{port}");
var app = builder.Build();
app.MapGet("/", () => "x");
app.Run();
-- Procfile --
web: dotnet out/dome.dll
-- appsettings.json --
{"Server":{"Port":4713}}
`, ` => any 4713
Server__Port=8613 => any 8613`},
	{"configure kestrel", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
using System.Net;
var builder = WebApplication.CreateBuilder(args);
builder.WebHost.ConfigureKestrel((context, options) =>
{
    var port = int.TryParse(Environment.GetEnvironmentVariable("PORT"), out var p) ? p : 4614;
    if (context.HostingEnvironment.IsDevelopment())
        options.ListenLocalhost(port);
    else
        options.Listen(IPAddress.Any, port);
});
var app = builder.Build();
app.MapGet("/", () => "x");
app.Run();
-- Procfile --
web: dotnet out/dome.dll
`, ` => any 4614
PORT=8614 => any 8614
PORT=x => any 4614`},
	{"appsettings kestrel endpoints", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
app.MapGet("/", () => "x");
app.Run();
-- Procfile --
web: dotnet out/dome.dll
-- appsettings.json --
{"Kestrel":{"Endpoints":{"Http":{"Url":"http://0.0.0.0:4615"}}}}
`, ` => any 4615
Kestrel__Endpoints__Http__Url=http://127.0.0.1:8615 => loopback 8615`},
	{"old startup", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Hosting;
namespace Dome
{
    public class Program
    {
        public static void Main(string[] args) => CreateHostBuilder(args).Build().Run();

        public static IHostBuilder CreateHostBuilder(string[] args) =>
            Host.CreateDefaultBuilder(args).ConfigureWebHostDefaults(web =>
            {
                web.UseStartup<Startup>();
                web.UseUrls("http://0.0.0.0:" + (Environment.GetEnvironmentVariable("PORT") ?? "4616"));
            });
    }
}
-- Procfile --
web: dotnet out/dome.dll
`, ` => any 4616
PORT=8616 => any 8616`},
	{"urls add", `-- dome.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
app.MapGet("/", () => "x");
if (Environment.GetEnvironmentVariable("PORT") is { Length: > 0 } port)
{
    app.Urls.Clear();
    app.Urls.Add($"http://*:{port}");
}
app.Run();
-- Procfile --
web: dotnet out/dome.dll
`, ` => loopback 5000
PORT=8617 => any 8617`},
	{"ktor embedded", `-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies {
  implementation("io.ktor:ktor-server-netty:3.0.0")
}
application { mainClass.set("dome.MainKt") }
-- settings.gradle.kts --
rootProject.name = "dome"
-- src/main/kotlin/dome/Main.kt --
package dome
import io.ktor.server.engine.*
import io.ktor.server.netty.*
import io.ktor.server.response.*
import io.ktor.server.routing.*

fun main() {
    val port = System.getenv("PORT")?.toIntOrNull() ?: 4621
    embeddedServer(Netty, port = port, host = "0.0.0.0") {
        routing { get("/") { call.respondText("x") } }
    }.start(wait = true)
}
-- Procfile --
web: build/install/dome/bin/dome
`, ` => any 4621
PORT=8621 => any 8621
PORT=x => any 4621`},
	{"ktor module conf", `-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies {
  implementation("io.ktor:ktor-server-netty:3.0.0")
}
application { mainClass.set("dome.MainKt") }
-- settings.gradle.kts --
rootProject.name = "dome"
-- src/main/kotlin/dome/Main.kt --
package dome
import io.ktor.server.application.*
import io.ktor.server.response.*
import io.ktor.server.routing.*

fun main(args: Array<String>): Unit = io.ktor.server.netty.EngineMain.main(args)

fun Application.module() { routing { get("/") { call.respondText("x") } } }
-- Procfile --
web: build/install/dome/bin/dome
-- src/main/resources/application.conf --
ktor {
  deployment {
    port = 4622
    port = ${?PORT}
  }
  application { modules = [ dome.MainKt.module ] }
}
`, ` => any 4622
PORT=8622 => any 8622`},
	{"javalin kotlin", `-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies {
  implementation("io.javalin:javalin:6.3.0")
}
application { mainClass.set("dome.MainKt") }
-- settings.gradle.kts --
rootProject.name = "dome"
-- src/main/kotlin/dome/Main.kt --
package dome
import io.javalin.Javalin

data class Config(val host: String, val port: Int) {
    companion object {
        fun fromEnv(env: Map<String, String> = System.getenv()) = Config(
            host = env["HOST"] ?: "0.0.0.0",
            port = (env["PORT"] ?: "4623").toInt(),
        )
    }
}

fun main() {
    val config = Config.fromEnv()
    Javalin.create().get("/") { it.result("x") }.start(config.host, config.port)
}
-- Procfile --
web: build/install/dome/bin/dome
`, ` => any 4623
PORT=8623 HOST=127.0.0.1 => loopback 8623
PORT=x => exits`},
	{"http4k", `-- build.gradle.kts --
plugins {
  kotlin("jvm") version "2.1.0"
  application
}
dependencies {
  implementation("org.http4k:http4k-core:5.0.0.0")
}
application { mainClass.set("dome.MainKt") }
-- settings.gradle.kts --
rootProject.name = "dome"
-- src/main/kotlin/dome/Main.kt --
package dome
import org.http4k.core.*
import org.http4k.server.SunHttp
import org.http4k.server.asServer

fun port(): Int {
    val raw = System.getenv("PORT")
    return when {
        raw.isNullOrBlank() -> 4624
        else -> raw.trim().toInt()
    }
}

fun main() {
    val app: HttpHandler = { Response(Status.OK).body("x") }
    app.asServer(SunHttp(port())).start()
}
-- Procfile --
web: build/install/dome/bin/dome
`, ` => any 4624
PORT=8624 => any 8624`},
	{"bandit plug", `-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.15", deps: deps()]
  def application, do: [mod: {Dome.Application, []}, extra_applications: [:logger]]
  defp deps, do: [{:bandit, "~> 1.5"}, {:plug_cowboy, "~> 2.7"}, {:phoenix, "~> 1.7"}]
end
-- Procfile --
web: mix run --no-halt
-- lib/dome/application.ex --
defmodule Dome.Application do
  use Application

  def start(_type, _args) do
    port = String.to_integer(System.get_env("PORT") || "4631")
    children = [{Bandit, plug: Dome.Router, port: port}]
    Supervisor.start_link(children, strategy: :one_for_one)
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
`, ` => any 4631
PORT=8631 => any 8631
PORT=x => exits`},
	{"cowboy with config", `-- mix.exs --
defmodule Dome.MixProject do
  use Mix.Project
  def project, do: [app: :dome, version: "0.1.0", elixir: "~> 1.15", deps: deps()]
  def application, do: [mod: {Dome.Application, []}, extra_applications: [:logger]]
  defp deps, do: [{:bandit, "~> 1.5"}, {:plug_cowboy, "~> 2.7"}, {:phoenix, "~> 1.7"}]
end
-- Procfile --
web: mix run --no-halt
-- config/config.exs --
import Config
config :dome, port: 4632
-- config/runtime.exs --
import Config
if port = System.get_env("PORT") do
  config :dome, port: String.to_integer(port)
end
-- lib/dome/application.ex --
defmodule Dome.Application do
  use Application

  @impl true
  def start(_type, _args) do
    children = [
      {Plug.Cowboy, scheme: :http, plug: Dome.Router, options: [port: Application.get_env(:dome, :port), ip: {127, 0, 0, 1}]}
    ]
    Supervisor.start_link(children, strategy: :one_for_one, name: Dome.Supervisor)
  end
end
`, ` => loopback 4632
PORT=8632 => loopback 8632`},
}

func TestCompiled(t *testing.T) {
	t.Parallel()
	agree(t, compiled)
}
