package check_test

import "testing"

// rustPrograms are ordinary programs of Rust: each was built and run in the environments that
// stand beside it, and what it did was read from the kernel.
var rustPrograms = []struct{ name, tree, want string }{
	{"Rust: plain env with default", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::env;
use std::io::{Read, Write};
use std::net::{TcpListener, TcpStream};

fn handle(mut stream: TcpStream) {
    let mut buf = [0; 512];
    let _ = stream.read(&mut buf);
    let _ = stream.write_all(b"HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\nok");
}

fn main() {
    let port = env::var("PORT").unwrap_or_else(|_| "12901".to_string());
    let addr = format!("0.0.0.0:{}", port);
    let listener = TcpListener::bind(&addr).expect("could not bind");
    println!("listening on {}", addr);
    for stream in listener.incoming() {
        match stream {
            Ok(s) => handle(s),
            Err(e) => eprintln!("{}", e),
        }
    }
}
`, ` => any 12901
PORT=12101 => any 12101
PORT=abc => exits`},
	{"Rust: parse with match and exit", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::process;
use std::thread;

const DEFAULT_PORT: u16 = 12902;

fn port_from_env() -> Result<u16, String> {
    match std::env::var("GATE_PORT") {
        Ok(raw) => raw.trim().parse::<u16>().map_err(|e| format!("GATE_PORT={raw}: {e}")),
        Err(_) => Ok(DEFAULT_PORT),
    }
}

fn main() {
    let port = match port_from_env() {
        Ok(p) => p,
        Err(msg) => {
            eprintln!("error: {msg}");
            process::exit(78);
        }
    };
    let listener = TcpListener::bind(("127.0.0.1", port)).unwrap();
    let mut handles = Vec::new();
    for _ in 0..2 {
        let l = listener.try_clone().unwrap();
        handles.push(thread::spawn(move || loop {
            if let Ok((_s, _a)) = l.accept() {}
        }));
    }
    for h in handles {
        h.join().unwrap();
    }
}
`, ` => loopback 12902
GATE_PORT=12102 => loopback 12102
GATE_PORT=70000 => exits`},
	{"Rust: config struct in module from_env", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/config.rs --
use std::env;
use std::fmt;
use std::str::FromStr;

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mode {
    Development,
    Production,
}

impl FromStr for Mode {
    type Err = String;

    fn from_str(s: &str) -> Result<Self, Self::Err> {
        match s.to_lowercase().as_str() {
            "development" | "dev" => Ok(Mode::Development),
            "production" | "prod" => Ok(Mode::Production),
            other => Err(format!("{other} is no mode")),
        }
    }
}

#[derive(Debug, Clone)]
pub struct Config {
    pub mode: Mode,
    pub host: String,
    pub port: u16,
}

impl fmt::Display for Config {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}:{}", self.host, self.port)
    }
}

impl Config {
    pub fn from_env() -> Result<Self, Box<dyn std::error::Error>> {
        let mode: Mode = env::var("APP_ENV").unwrap_or_else(|_| "dev".into()).parse()?;
        let default_host = match mode {
            Mode::Development => "127.0.0.1",
            Mode::Production => "0.0.0.0",
        };
        let host = env::var("APP_HOST").unwrap_or_else(|_| default_host.to_string());
        let port = match env::var("APP_PORT") {
            Ok(v) => v.parse()?,
            Err(env::VarError::NotPresent) => 12903,
            Err(e) => return Err(Box::new(e)),
        };
        Ok(Self { mode, host, port })
    }
}
-- src/main.rs --
mod config;

use config::{Config, Mode};
use std::net::TcpListener;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let config = Config::from_env()?;
    if config.mode == Mode::Production {
        println!("production");
    }
    let listener = TcpListener::bind(config.to_string())?;
    for stream in listener.incoming() {
        let _stream = stream?;
    }
    Ok(())
}
`, ` => loopback 12903
APP_ENV=production => any 12903
APP_ENV=production APP_PORT=12103 APP_HOST=127.0.0.1 => loopback 12103`},
	{"Rust: tokio with socketaddr", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tokio = { version = "1", features = ["full"] }
-- src/main.rs --
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use tokio::io::AsyncWriteExt;
use tokio::net::TcpListener;

#[tokio::main]
async fn main() -> std::io::Result<()> {
    let port: u16 = std::env::var("PORT")
        .ok()
        .and_then(|p| p.parse().ok())
        .unwrap_or(12904);
    let host: IpAddr = std::env::var("HOST")
        .map(|h| h.parse().expect("HOST must be an address"))
        .unwrap_or(IpAddr::V4(Ipv4Addr::UNSPECIFIED));
    let addr = SocketAddr::new(host, port);
    let listener = TcpListener::bind(addr).await?;
    println!("on {}", listener.local_addr()?);
    loop {
        let (mut socket, _) = listener.accept().await?;
        tokio::spawn(async move {
            let _ = socket.write_all(b"HTTP/1.1 204 No Content\r\n\r\n").await;
        });
    }
}
`, ` => any 12904
PORT=12104 => any 12104
HOST=::1 => loopback 12904
HOST=nowhere => exits`},
	{"Rust: hyper with make_service and graceful", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tokio = { version = "1", features = ["full"] }
hyper = { version = "0.14", features = ["full"] }
-- src/main.rs --
use std::convert::Infallible;
use std::net::SocketAddr;

use hyper::service::{make_service_fn, service_fn};
use hyper::{Body, Request, Response, Server};

async fn hello(_req: Request<Body>) -> Result<Response<Body>, Infallible> {
    Ok(Response::new(Body::from("ok")))
}

async fn shutdown_signal() {
    tokio::signal::ctrl_c().await.expect("signal");
}

fn address() -> Result<SocketAddr, std::net::AddrParseError> {
    std::env::var("LISTEN").as_deref().unwrap_or("0.0.0.0:12905").parse()
}

#[tokio::main(flavor = "current_thread")]
async fn main() {
    let addr = match address() {
        Ok(a) => a,
        Err(e) => {
            eprintln!("LISTEN: {e}");
            std::process::exit(1)
        }
    };
    let make_svc = make_service_fn(|_conn| async { Ok::<_, Infallible>(service_fn(hello)) });
    let server = Server::bind(&addr).serve(make_svc);
    let graceful = server.with_graceful_shutdown(shutdown_signal());
    if let Err(e) = graceful.await {
        eprintln!("server error: {}", e);
    }
}
`, ` => any 12905
LISTEN=127.0.0.1:12105 => loopback 12105
LISTEN=12105 => exits`},
	{"Rust: tiny_http with threads", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tiny_http = "0.12"
-- src/main.rs --
use tiny_http::{Response, Server};

fn main() {
    let port = std::env::var("PORT").map(|p| p.parse::<u32>().unwrap_or(12906)).unwrap_or(12906);
    let server = Server::http(format!("0.0.0.0:{port}")).unwrap();
    for request in server.incoming_requests() {
        let response = Response::from_string("ok");
        let _ = request.respond(response);
    }
}
`, ` => any 12906
PORT=12106 => any 12106`},
	{"Rust: clap derive with env", `-- Procfile --
web: ./target/debug/gate --host 127.0.0.1
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = { version = "4", features = ["derive", "env"] }
-- src/main.rs --
use clap::Parser;
use std::net::TcpListener;

/// Serves the catalogue of stars.
#[derive(Parser, Debug)]
#[command(name = "gate", version, about)]
struct Args {
    /// Where to listen
    #[arg(long, default_value = "0.0.0.0")]
    host: String,

    /// The port
    #[arg(short, long, env = "GATE_PORT", default_value_t = 12907)]
    port: u16,

    #[arg(short, long, action = clap::ArgAction::Count)]
    verbose: u8,
}

fn main() {
    let args = Args::parse();
    let listener = TcpListener::bind((args.host.as_str(), args.port)).unwrap();
    for _ in listener.incoming() {}
}
`, ` => loopback 12907
GATE_PORT=12107 => loopback 12107
GATE_PORT=0x10 => exits`},
	{"Rust: clap subcommands", `-- Procfile --
web: ./target/debug/gate serve --port $PORT
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = { version = "4", features = ["derive", "env"] }
-- src/main.rs --
use clap::{Args, Parser, Subcommand};
use std::net::{Ipv4Addr, TcpListener};

#[derive(Parser)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Start the server
    Serve(ServeArgs),
    /// Print the stars
    List { #[arg(default_value = "10")] limit: usize },
}

#[derive(Args)]
struct ServeArgs {
    #[arg(long, default_value_t = Ipv4Addr::UNSPECIFIED)]
    bind: Ipv4Addr,
    #[arg(long)]
    port: Option<u16>,
}

fn serve(args: &ServeArgs) -> std::io::Result<()> {
    let listener = TcpListener::bind((args.bind, args.port.unwrap_or(12908)))?;
    loop {
        let _ = listener.accept()?;
    }
}

fn main() {
    let cli = Cli::parse();
    match &cli.command {
        Command::Serve(args) => {
            if let Err(e) = serve(args) {
                eprintln!("{e}");
                std::process::exit(1);
            }
        }
        Command::List { limit } => {
            for i in 0..*limit {
                println!("star {i}");
            }
        }
    }
}
`, `PORT=12108 => any 12108`},
	{"Rust: generic env helper", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::fmt::Debug;
use std::net::TcpListener;
use std::str::FromStr;

fn env_or<T>(key: &str, default: T) -> T
where
    T: FromStr,
    T::Err: Debug,
{
    std::env::var(key).ok().and_then(|v| v.parse::<T>().ok()).unwrap_or(default)
}

fn env_required<T: FromStr>(key: &str) -> Option<T> {
    std::env::var(key).ok()?.parse().ok()
}

fn main() -> std::io::Result<()> {
    let host = env_or("HOST", String::from("0.0.0.0"));
    let port = env_or("PORT", 12909u16);
    let backlog: Option<u32> = env_required("BACKLOG");
    println!("{backlog:?}");
    let listener = TcpListener::bind(format!("{host}:{port}"))?;
    listener.incoming().for_each(drop);
    Ok(())
}
`, ` => any 12909
PORT=12109 HOST=127.0.0.1 => loopback 12109
PORT=-5 => any 12909`},
	{"Rust: settings from toml file with env", `-- Procfile --
web: ./target/debug/gate config/gate.toml
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
serde = { version = "1", features = ["derive"] }
toml = "0.5"
-- config/gate.toml --
name = "gate"
[server]
host = "127.0.0.1"
port = 12910
-- src/main.rs --
use serde::Deserialize;
use std::{env, fs, net::TcpListener, path::PathBuf};

#[derive(Deserialize)]
struct Settings {
    name: String,
    server: ServerSettings,
    #[serde(default)]
    debug: bool,
}

#[derive(Deserialize)]
struct ServerSettings {
    #[serde(default = "default_host")]
    host: String,
    port: u16,
}

fn default_host() -> String {
    "0.0.0.0".to_owned()
}

fn load() -> Result<Settings, Box<dyn std::error::Error>> {
    let path = env::args().nth(1).map(PathBuf::from).unwrap_or_else(|| PathBuf::from("gate.toml"));
    let text = fs::read_to_string(&path)?;
    let mut settings: Settings = toml::from_str(&text)?;
    if let Ok(port) = env::var("GATE__PORT") {
        settings.server.port = port.parse()?;
    }
    Ok(settings)
}

fn main() {
    let settings = load().expect("settings");
    println!("{} {}", settings.name, settings.debug);
    let l = TcpListener::bind((&settings.server.host[..], settings.server.port)).unwrap();
    for _s in l.incoming() {}
}
`, ` => loopback 12910
GATE__PORT=12110 => loopback 12110`},
	{"Rust: dotenv", `-- Procfile --
web: ./target/debug/gate
-- .env --
PORT=12911
HOST=127.0.0.1
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
dotenv = "0.15"
-- src/main.rs --
use dotenv::dotenv;
use std::env;

fn main() {
    dotenv().ok();
    let host = env::var("HOST").expect("HOST must be set");
    let port = env::var("PORT").expect("PORT must be set");
    let server_url = format!("{host}:{port}");
    let listener = std::net::TcpListener::bind(server_url).unwrap();
    loop {
        listener.accept().unwrap();
    }
}
`, ` => loopback 12911
PORT=12111 => loopback 12111`},
	{"Rust: envy", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
serde = { version = "1", features = ["derive"] }
envy = "0.4"
-- src/main.rs --
use serde::Deserialize;
use std::net::{SocketAddr, TcpListener};

#[derive(Deserialize, Debug)]
struct Config {
    #[serde(default = "default_port")]
    port: u16,
    host: Option<String>,
}

fn default_port() -> u16 { 12912 }

fn main() {
    match envy::prefixed("GATE_").from_env::<Config>() {
        Ok(config) => {
            let ip = config.host.as_deref().unwrap_or("0.0.0.0").parse().unwrap();
            let addr = SocketAddr::new(ip, config.port);
            let listener = TcpListener::bind(addr).unwrap();
            for _ in listener.incoming() {}
        }
        Err(error) => panic!("{:#?}", error),
    }
}
`, ` => any 12912
GATE_PORT=12112 => any 12112
GATE_PORT=many => exits`},
	{"Rust: config crate", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
serde = { version = "1", features = ["derive"] }
config = "0.11"
-- config/default.toml --
[server]
host = "127.0.0.1"
port = 12913
-- config/production.toml --
[server]
host = "0.0.0.0"
-- src/main.rs --
use config::{Config, ConfigError, Environment, File};
use serde::Deserialize;

#[derive(Debug, Deserialize)]
struct Server {
    host: String,
    port: u16,
}

#[derive(Debug, Deserialize)]
struct Settings {
    server: Server,
}

impl Settings {
    fn new() -> Result<Self, ConfigError> {
        let mode = std::env::var("RUN_MODE").unwrap_or_else(|_| "development".into());
        let mut s = Config::default();
        s.merge(File::with_name("config/default"))?;
        s.merge(File::with_name(&format!("config/{}", mode)).required(false))?;
        s.merge(Environment::with_prefix("APP").separator("__"))?;
        s.try_into()
    }
}

fn main() {
    let settings = Settings::new().unwrap();
    let l = std::net::TcpListener::bind((settings.server.host.as_str(), settings.server.port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12913
APP_SERVER__PORT=12113 => loopback 12113
RUN_MODE=production => any 12913`},
	{"Rust: two listeners in threads", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::sync::Arc;
use std::thread;

struct Service {
    name: &'static str,
    port: u16,
    public: bool,
}

fn port(name: &str, fallback: u16) -> u16 {
    std::env::var(name).map_or(fallback, |v| v.parse().unwrap_or(fallback))
}

impl Service {
    fn run(&self) {
        let host = if self.public { "0.0.0.0" } else { "127.0.0.1" };
        let listener = TcpListener::bind((host, self.port)).expect(self.name);
        for conn in listener.incoming().flatten() {
            drop(conn);
        }
    }
}

fn main() {
    let services = vec![
        Service { name: "web", port: port("PORT", 12914), public: true },
        Service { name: "admin", port: port("ADMIN_PORT", 12915), public: false },
    ];
    let threads: Vec<_> = services
        .into_iter()
        .map(Arc::new)
        .map(|s| thread::spawn(move || s.run()))
        .collect();
    for t in threads {
        t.join().unwrap();
    }
}
`, ` => any 12914 & loopback 12915
PORT=12114 ADMIN_PORT=12115 => any 12114 & loopback 12115`},
	{"Rust: builder pattern and trait objects", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::{TcpListener, ToSocketAddrs};

trait Source {
    fn get(&self, key: &str) -> Option<String>;
}

struct Env;
struct Defaults;

impl Source for Env {
    fn get(&self, key: &str) -> Option<String> {
        std::env::var(key.to_uppercase()).ok()
    }
}

impl Source for Defaults {
    fn get(&self, key: &str) -> Option<String> {
        let value = match key {
            "bind" => "127.0.0.1",
            "port" => "12916",
            _ => return None,
        };
        Some(value.to_string())
    }
}

#[derive(Default)]
struct Server {
    sources: Vec<Box<dyn Source>>,
    backlog: Option<u32>,
}

impl Server {
    fn new() -> Self {
        Self::default()
    }
    fn with(mut self, s: impl Source + 'static) -> Self {
        self.sources.push(Box::new(s));
        self
    }
    fn backlog(mut self, n: u32) -> Self {
        self.backlog = Some(n);
        self
    }
    fn get(&self, key: &str) -> String {
        self.sources.iter().find_map(|s| s.get(key)).unwrap_or_default()
    }
    fn listen(&self) -> std::io::Result<TcpListener> {
        let addrs: Vec<_> = format!("{}:{}", self.get("bind"), self.get("port")).to_socket_addrs()?.collect();
        TcpListener::bind(&addrs[..])
    }
}

fn main() {
    let server = Server::new().with(Env).with(Defaults).backlog(64);
    let l = server.listen().unwrap();
    while let Ok((s, from)) = l.accept() {
        println!("{from}");
        drop(s);
    }
}
`, ` => loopback 12916
BIND=0.0.0.0 PORT=12116 => any 12116`},
	{"Rust: first free port", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::ops::RangeInclusive;

fn range() -> RangeInclusive<u16> {
    let text = std::env::var("PORT_RANGE").unwrap_or_else(|_| "12917-12920".to_string());
    let (from, to) = text.split_once('-').expect("a range");
    from.parse().unwrap()..=to.parse().unwrap()
}

fn is_free(port: u16) -> bool {
    TcpListener::bind(("127.0.0.1", port)).is_ok()
}

fn main() {
    let port = range().find(|p| is_free(*p)).expect("no free port");
    let listener = TcpListener::bind(("0.0.0.0", port)).unwrap();
    println!("http://localhost:{port}");
    for s in listener.incoming() {
        s.unwrap();
    }
}
`, ` => any 12917
PORT_RANGE=12117-12119 => any 12117`},
	{"Rust: static OnceLock settings", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
mod settings {
    use std::collections::HashMap;
    use std::sync::OnceLock;

    static SETTINGS: OnceLock<HashMap<String, String>> = OnceLock::new();

    pub fn all() -> &'static HashMap<String, String> {
        SETTINGS.get_or_init(|| {
            let mut map = HashMap::from([
                ("port".to_string(), "12921".to_string()),
                ("host".to_string(), "0.0.0.0".to_string()),
            ]);
            for (k, v) in std::env::vars() {
                map.insert(k.to_lowercase(), v);
            }
            map
        })
    }

    pub fn get(key: &str) -> &'static str {
        all().get(key).map(String::as_str).unwrap_or("")
    }
}

fn main() {
    let port: u16 = settings::get("port").parse().unwrap_or_else(|e| {
        eprintln!("port: {e}");
        std::process::exit(2)
    });
    let l = std::net::TcpListener::bind((settings::get("host"), port)).unwrap();
    std::thread::spawn(move || for _ in l.incoming() {}).join().unwrap();
}
`, ` => any 12921
PORT=12121 => any 12121
PORT=http => exits`},
	{"Rust: unix socket or tcp", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::os::unix::net::UnixListener;

enum Listen {
    Tcp(String),
    Unix(String),
}

impl TryFrom<&str> for Listen {
    type Error = String;
    fn try_from(s: &str) -> Result<Self, String> {
        if let Some(path) = s.strip_prefix("unix:") {
            Ok(Listen::Unix(path.to_string()))
        } else if let Some(addr) = s.strip_prefix("tcp:") {
            Ok(Listen::Tcp(addr.to_string()))
        } else {
            Err(format!("cannot listen on {s}"))
        }
    }
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let spec = std::env::var("LISTEN").unwrap_or("tcp:0.0.0.0:12922".into());
    match Listen::try_from(spec.as_str())? {
        Listen::Tcp(addr) => {
            let l = TcpListener::bind(&addr)?;
            for _ in l.incoming() {}
        }
        Listen::Unix(path) => {
            let _ = std::fs::remove_file(&path);
            let l = UnixListener::bind(&path)?;
            for _ in l.incoming() {}
        }
    }
    Ok(())
}
`, ` => any 12922
LISTEN=unix:gate.sock => unix:gate.sock
LISTEN=tcp:127.0.0.1:12122 => loopback 12122
LISTEN=udp:1 => exits`},
	{"Rust: tokio select and channel", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tokio = { version = "1", features = ["full"] }
-- src/main.rs --
use tokio::net::TcpListener;
use tokio::sync::mpsc;
use tokio::task::JoinSet;

async fn serve(name: &str, port: u16, tx: mpsc::Sender<String>) -> std::io::Result<()> {
    let listener = TcpListener::bind(("0.0.0.0", port)).await?;
    tx.send(format!("{name} on {port}")).await.ok();
    loop {
        let (_stream, peer) = listener.accept().await?;
        println!("{peer}");
    }
}

#[tokio::main]
async fn main() {
    let (tx, mut rx) = mpsc::channel(8);
    let base: u16 = std::env::var("PORT").unwrap_or_else(|_| String::from("12923")).parse().expect("PORT");
    let mut set = JoinSet::new();
    let tx2 = tx.clone();
    set.spawn(async move { serve("web", base, tx2).await });
    set.spawn(async move { serve("metrics", base + 1, tx).await });
    tokio::spawn(async move {
        while let Some(line) = rx.recv().await {
            println!("{line}");
        }
    });
    tokio::select! {
        r = set.join_next() => { println!("a server ended: {r:?}"); }
        _ = tokio::signal::ctrl_c() => println!("bye"),
    }
}
`, ` => any 12923 & any 12924
PORT=12123 => any 12123 & any 12124`},
	{"Rust: workspace with a library", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[workspace]
members = ["gate", "shared-settings"]
resolver = "2"
-- shared-settings/Cargo.toml --
[package]
name = "shared-settings"
version = "0.1.0"
edition = "2021"
-- shared-settings/src/lib.rs --
//! Settings of all programs.
pub mod net;

pub struct Prefix<'a>(pub &'a str);

impl<'a> Prefix<'a> {
    pub fn var(&self, name: &str) -> Option<String> {
        std::env::var(format!("{}_{}", self.0, name)).ok().filter(|v| !v.is_empty())
    }
}
-- shared-settings/src/net.rs --
use crate::Prefix;

#[derive(Debug, Clone, Copy)]
pub struct Address {
    pub public: bool,
    pub port: u16,
}

impl Default for Address {
    fn default() -> Self {
        Address { public: true, port: 12925 }
    }
}

pub fn address(prefix: &Prefix) -> Address {
    let mut a = Address::default();
    if let Some(p) = prefix.var("LISTEN_PORT").and_then(|p| p.parse().ok()) {
        a.port = p;
        a.public = false;
    }
    a
}
-- gate/Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
shared-settings = { path = "../shared-settings" }
-- gate/src/main.rs --
use shared_settings::{net::address, Prefix};

fn main() {
    let a = address(&Prefix("GATE"));
    let host = match a.public {
        true => [0, 0, 0, 0],
        false => [127, 0, 0, 1],
    };
    let listener = std::net::TcpListener::bind(std::net::SocketAddr::from((host, a.port))).unwrap();
    for _ in listener.incoming() {}
}
`, ` => any 12925
GATE_LISTEN_PORT=12125 => loopback 12125`},
	{"Rust: json config without serde derive", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
serde_json = "1"
-- nodes.json --
{"a": {"listen": {"host": "127.0.0.1", "port": 12926}}, "b": {"listen": {"port": 12927}}}
-- src/main.rs --
use serde_json::Value;
use std::net::TcpListener;

fn main() {
    let text = include_str!("../nodes.json");
    let all: Value = serde_json::from_str(text).unwrap();
    let node = std::env::var("NODE").unwrap_or_else(|_| "a".to_string());
    let listen = &all[node.as_str()]["listen"];
    let host = listen["host"].as_str().unwrap_or("0.0.0.0");
    let port = listen["port"].as_u64().expect("a port") as u16;
    let l = TcpListener::bind((host, port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12926
NODE=b => any 12927`},
	{"Rust: args by hand", `-- Procfile --
web: ./target/debug/gate -p 12128 --public
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::env;
use std::net::TcpListener;

#[derive(Debug, Default)]
struct Options {
    port: Option<u16>,
    public: bool,
    rest: Vec<String>,
}

fn parse(mut args: impl Iterator<Item = String>) -> Result<Options, String> {
    let mut o = Options::default();
    while let Some(a) = args.next() {
        match a.as_str() {
            "-p" | "--port" => {
                let v = args.next().ok_or_else(|| format!("{a} needs a value"))?;
                o.port = Some(v.parse().map_err(|_| format!("{v} is no port"))?);
            }
            "--public" => o.public = true,
            s if s.starts_with("--port=") => o.port = s["--port=".len()..].parse().ok(),
            s if s.starts_with('-') => return Err(format!("unknown option {s}")),
            _ => o.rest.push(a),
        }
    }
    Ok(o)
}

fn main() {
    let o = parse(env::args().skip(1)).unwrap_or_else(|e| {
        eprintln!("{e}");
        std::process::exit(64);
    });
    let host = if o.public { "0.0.0.0" } else { "localhost" };
    let l = TcpListener::bind((host, o.port.unwrap_or(12928))).unwrap();
    l.incoming().for_each(|s| drop(s));
}
`, ` => any 12128`},
	{"Rust: ends after serving one", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::thread;
use std::time::Duration;

fn main() {
    let l = TcpListener::bind("0.0.0.0:12129").unwrap();
    let t = thread::spawn(move || {
        for s in l.incoming() {
            let _ = s;
        }
    });
    if std::env::var_os("KEEP").is_some() {
        t.join().unwrap();
    } else {
        thread::sleep(Duration::from_millis(20));
    }
}
`, ` => exits
KEEP=1 => any 12129`},
	{"Rust: fold over candidates and checked math", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::{Ipv6Addr, SocketAddr, TcpListener};

fn main() {
    let ports: Vec<u16> = std::env::var("PORTS")
        .unwrap_or_default()
        .split(',')
        .map(str::trim)
        .filter(|p| !p.is_empty())
        .filter_map(|p| p.parse().ok())
        .collect();
    let worker: u16 = std::env::var("WORKER").ok().map(|w| w.parse().unwrap_or(0)).unwrap_or(0);
    let port = ports.first().copied().unwrap_or(12931).checked_add(worker * 10).unwrap();
    let addr = SocketAddr::from((Ipv6Addr::LOCALHOST, port));
    let l = TcpListener::bind(addr).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12931
PORTS=,abc,12131,9 => loopback 12131
PORTS=a WORKER=3 => loopback 12961`},
	{"Rust: macro rules and error enum with From", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::fmt;
use std::net::TcpListener;
use std::num::ParseIntError;

#[derive(Debug)]
enum AppError {
    Missing(&'static str),
    BadNumber(ParseIntError),
    Io(std::io::Error),
}

impl fmt::Display for AppError {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        match self {
            AppError::Missing(name) => write!(f, "{name} is missing"),
            AppError::BadNumber(e) => write!(f, "{e}"),
            AppError::Io(e) => e.fmt(f),
        }
    }
}

impl std::error::Error for AppError {}

impl From<ParseIntError> for AppError {
    fn from(e: ParseIntError) -> Self { AppError::BadNumber(e) }
}
impl From<std::io::Error> for AppError {
    fn from(e: std::io::Error) -> Self { AppError::Io(e) }
}

macro_rules! env_or {
    ($name:expr, $default:expr) => {
        match std::env::var($name) {
            Ok(v) => v,
            Err(_) => $default.to_string(),
        }
    };
}

fn run() -> Result<(), AppError> {
    let raw = env_or!("PORT", "12951");
    if raw.is_empty() {
        return Err(AppError::Missing("PORT"));
    }
    let port: u16 = raw.parse()?;
    let listener = TcpListener::bind(("0.0.0.0", port))?;
    for s in listener.incoming() {
        drop(s?);
    }
    Ok(())
}

fn main() {
    if let Err(e) = run() {
        eprintln!("{e}");
        std::process::exit(1);
    }
}
`, ` => any 12951
PORT=12201 => any 12201
PORT=x => exits`},
	{"Rust: exit code from main", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::{TcpListener, Ipv4Addr};
use std::process::ExitCode;

fn main() -> ExitCode {
    let Ok(port) = std::env::var("PORT").unwrap_or("12952".into()).parse::<u16>() else {
        return ExitCode::from(2);
    };
    if port == 0 {
        eprintln!("a port of its own is needed");
        return ExitCode::FAILURE;
    }
    let Ok(listener) = TcpListener::bind((Ipv4Addr::UNSPECIFIED, port)) else {
        return ExitCode::FAILURE;
    };
    'serve: loop {
        match listener.accept() {
            Ok((_, peer)) if peer.ip().is_unspecified() => break 'serve,
            Ok(_) => continue 'serve,
            Err(_) => break,
        }
    }
    ExitCode::SUCCESS
}
`, ` => any 12952
PORT=12202 => any 12202
PORT=0 => exits`},
	{"Rust: rc refcell registry", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::cell::{Cell, RefCell};
use std::collections::BTreeMap;
use std::net::TcpListener;
use std::rc::Rc;

#[derive(Clone, Debug, PartialEq)]
struct Dome { name: String, port: u16 }

#[derive(Default)]
struct Registry {
    domes: RefCell<BTreeMap<String, Rc<Dome>>>,
    next: Cell<u16>,
}

impl Registry {
    fn add(&self, name: &str) -> Rc<Dome> {
        let port = 12203 + self.next.replace(self.next.get() + 1);
        let dome = Rc::new(Dome { name: name.to_owned(), port });
        self.domes.borrow_mut().insert(name.to_owned(), Rc::clone(&dome));
        dome
    }
    fn find(&self, name: &str) -> Option<Rc<Dome>> {
        self.domes.borrow().get(name).cloned()
    }
}

fn main() {
    let registry = Registry::default();
    for name in ["east", "north", "west"] {
        registry.add(name);
    }
    let region = std::env::var("REGION").unwrap_or_else(|_| "east".to_owned());
    let dome = registry.find(&region).expect("no such dome");
    println!("{} of {}", dome.name, registry.domes.borrow().len());
    let l = TcpListener::bind(("0.0.0.0", dome.port)).unwrap();
    for s in l.incoming() { let _ = s; }
}
`, ` => any 12203
REGION=north => any 12204`},
	{"Rust: trait with default method and assoc const", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::{IpAddr, Ipv4Addr, SocketAddr, TcpListener};

trait Endpoint {
    const DEFAULT_PORT: u16;
    const NAME: &'static str;

    fn ip(&self) -> IpAddr { IpAddr::V4(Ipv4Addr::UNSPECIFIED) }

    fn port(&self) -> u16 {
        let key = format!("{}PORT", Self::NAME);
        std::env::var(&key).ok().and_then(|v| v.parse().ok()).unwrap_or(Self::DEFAULT_PORT)
    }

    fn addr(&self) -> SocketAddr { SocketAddr::new(self.ip(), self.port()) }
}

struct Web;
struct Admin;

impl Endpoint for Web {
    const DEFAULT_PORT: u16 = 12954;
    const NAME: &'static str = "";
}

impl Endpoint for Admin {
    const DEFAULT_PORT: u16 = Web::DEFAULT_PORT + 1;
    const NAME: &'static str = "ADMIN_";
    fn ip(&self) -> IpAddr { Ipv4Addr::LOCALHOST.into() }
}

fn serve(e: impl Endpoint) {
    let listener = TcpListener::bind(e.addr()).unwrap();
    loop { let _ = listener.accept(); }
}

fn main() {
    if std::env::var("ADMIN").as_deref() == Ok("1") { serve(Admin) } else { serve(Web) }
}
`, ` => any 12954
PORT=12204 => any 12204
ADMIN=1 => loopback 12955`},
	{"Rust: properties file by lines", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- conf/app.properties --
# the observatory
server.port = 12955
server.host=127.0.0.1
-- conf/app-prod.properties --
server.host=0.0.0.0
-- src/main.rs --
use std::collections::HashMap;
use std::fs::File;
use std::io::{BufRead, BufReader};
use std::net::TcpListener;

fn read(path: &str, into: &mut HashMap<String, String>) -> std::io::Result<usize> {
    let file = File::open(path)?;
    let mut n = 0;
    for line in BufReader::new(file).lines() {
        let line = line?;
        let line = line.trim();
        if line.is_empty() || line.starts_with('#') {
            continue;
        }
        if let Some((k, v)) = line.split_once('=') {
            into.insert(k.trim().to_string(), v.trim().to_string());
            n += 1;
        }
    }
    Ok(n)
}

fn main() {
    let mut props = HashMap::new();
    read("conf/app.properties", &mut props).unwrap();
    if let Ok(p) = std::env::var("PROFILE") {
        if let Err(e) = read(&format!("conf/app-{p}.properties"), &mut props) {
            eprintln!("no profile: {e}");
        }
    }
    let host = props.get("server.host").cloned().unwrap_or_default();
    let port: u16 = props["server.port"].parse().unwrap();
    let l = TcpListener::bind((host.as_str(), port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12955
PROFILE=prod => any 12955`},
	{"Rust: closures in a table", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;

type Maker = Box<dyn Fn(u16) -> String>;

fn table() -> Vec<(&'static str, Maker)> {
    vec![
        ("local", Box::new(|p| format!("127.0.0.1:{p}"))),
        ("staging", Box::new(move |p| format!("0.0.0.0:{}", p + 1))),
        ("hosted", Box::new(|p: u16| ["0.0.0.0".to_string(), p.to_string()].join(":"))),
    ]
}

fn main() {
    let mode = std::env::var("MODE").unwrap_or_else(|_| "hosted".into());
    let table = table();
    let (_, make) = table.iter().find(|(name, _)| *name == mode).unwrap_or_else(|| panic!("no mode {mode}"));
    let l = TcpListener::bind(make(12206)).unwrap();
    for s in l.incoming().flatten() { drop(s); }
}
`, ` => any 12206
MODE=staging => any 12207
MODE=zzz => exits`},
	{"Rust: thread scope and atomics", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::sync::atomic::{AtomicU16, AtomicUsize, Ordering};
use std::thread;

static NEXT_PORT: AtomicU16 = AtomicU16::new(12207);
static STARTED: AtomicUsize = AtomicUsize::new(0);

fn worker(id: usize) {
    let port = NEXT_PORT.fetch_add(1, Ordering::SeqCst);
    let l = TcpListener::bind(("127.0.0.1", port)).unwrap();
    STARTED.fetch_add(1, Ordering::Relaxed);
    println!("{id} on {port}");
    for _ in l.incoming() {}
}

fn main() {
    let n = std::env::var("WORKERS").ok().and_then(|w| w.parse::<usize>().ok()).map_or(1, |n| n.clamp(1, 2));
    thread::scope(|s| {
        for id in 0..n {
            s.spawn(move || worker(id));
        }
    });
}
`, ` => loopback 12207
WORKERS=3 => loopback 12207 & loopback 12208`},
	{"Rust: slices of args", `-- Procfile --
web: ./target/debug/gate serve 12208
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::env;
use std::net::TcpListener;

fn main() {
    let args: Vec<String> = env::args().collect();
    let words: Vec<&str> = args[1..].iter().map(|s| s.as_str()).collect();
    let (host, port) = match words.as_slice() {
        ["serve", host, port] => (host.to_string(), port.parse::<u16>().unwrap()),
        ["serve", port] => ("0.0.0.0".to_string(), port.parse().unwrap()),
        ["serve", rest @ ..] if rest.is_empty() => ("127.0.0.1".to_string(), 12958),
        [] => { eprintln!("usage"); std::process::exit(64) }
        other => panic!("{other:?}"),
    };
    let l = TcpListener::bind((host, port)).unwrap();
    while let Ok(_) = l.accept() {}
}
`, ` => any 12208
X=1 => any 12208`},
	{"Rust: deref wrapper and operator", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::ops::{Add, Deref};
use std::str::FromStr;

#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
struct Port(u16);

impl Port {
    pub const MIN: Port = Port(1024);
    pub const fn new(n: u16) -> Self { Port(n) }
}

impl Deref for Port {
    type Target = u16;
    fn deref(&self) -> &u16 { &self.0 }
}

impl Add<u16> for Port {
    type Output = Port;
    fn add(self, n: u16) -> Port { Port(self.0 + n) }
}

impl FromStr for Port {
    type Err = String;
    fn from_str(s: &str) -> Result<Port, String> {
        let n = s.parse::<u16>().map_err(|e| e.to_string())?;
        if Port(n) < Port::MIN { Err(format!("{n} is too low")) } else { Ok(Port(n)) }
    }
}

const BASE: Port = Port::new(12209);

fn main() {
    let offset: u16 = option("OFFSET").unwrap_or_default();
    let port = option::<Port>("PORT").unwrap_or(BASE) + offset;
    let l = TcpListener::bind(("0.0.0.0", *port)).unwrap();
    for _ in l.incoming() {}
}

fn option<T: FromStr>(name: &str) -> Option<T> {
    std::env::var(name).ok().and_then(|v| v.parse().ok())
}
`, ` => any 12209
OFFSET=3 => any 12212`},
	{"Rust: modules in folders with re-exports", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
mod app;
mod util;

use app::prelude::*;

fn main() {
    let settings = Settings::load();
    App::new(settings).run();
}
-- src/app/mod.rs --
mod server;
mod settings;

pub mod prelude {
    pub use super::server::App;
    pub use super::settings::Settings;
}
-- src/app/settings.rs --
use crate::util::env;

#[derive(Debug, Clone)]
pub struct Settings {
    pub listen: String,
    pub(crate) threads: usize,
}

impl Settings {
    pub fn load() -> Self {
        Settings {
            listen: env::string("LISTEN").unwrap_or_else(|| String::from(super::server::DEFAULT)),
            threads: env::parsed("THREADS").unwrap_or(1),
        }
    }
}
-- src/app/server.rs --
use super::settings::Settings;
use std::net::TcpListener;

pub const DEFAULT: &str = "[::]:12960";

pub struct App {
    settings: Settings,
}

impl App {
    pub fn new(settings: Settings) -> Self {
        Self { settings }
    }

    pub fn run(self) {
        let Settings { listen, threads } = &self.settings;
        let listener = TcpListener::bind(listen).expect("bind");
        let workers: Vec<_> = (0..*threads)
            .map(|_| {
                let l = listener.try_clone().unwrap();
                std::thread::spawn(move || loop {
                    let _ = l.accept();
                })
            })
            .collect();
        workers.into_iter().for_each(|w| w.join().unwrap());
    }
}
-- src/util.rs --
pub mod env {
    use std::str::FromStr;

    const PREFIX: &str = "GATE_";

    fn full(name: &str) -> String {
        [PREFIX, name].concat()
    }

    pub fn string(name: &str) -> Option<String> {
        std::env::var(full(name)).ok()
    }

    pub fn parsed<T: FromStr>(name: &str) -> Option<T> {
        string(name)?.parse().ok()
    }
}
`, ` => any 12960
GATE_LISTEN=127.0.0.1:12210 => loopback 12210`},
	{"Rust: tokio app with arc state and join", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tokio = { version = "1", features = ["full"] }
-- src/main.rs --
use std::collections::HashMap;
use std::sync::Arc;
use tokio::net::TcpListener;
use tokio::sync::{Mutex, RwLock};

struct State {
    hits: Mutex<u64>,
    ports: RwLock<HashMap<&'static str, u16>>,
}

impl State {
    async fn port(&self, name: &str) -> u16 {
        *self.ports.read().await.get(name).unwrap()
    }
}

async fn serve(state: Arc<State>, name: &'static str) -> std::io::Result<()> {
    let listener = TcpListener::bind(("127.0.0.1", state.port(name).await)).await?;
    loop {
        let (_s, _a) = listener.accept().await?;
        *state.hits.lock().await += 1;
    }
}

fn var(name: &str, default: u16) -> u16 {
    match std::env::var(name) {
        Ok(v) => v.parse().expect(name),
        Err(_) => default,
    }
}

#[tokio::main]
async fn main() -> std::io::Result<()> {
    let mut ports = HashMap::new();
    ports.insert("http", var("HTTP_PORT", 12961));
    ports.insert("ws", var("WS_PORT", 12962));
    let state = Arc::new(State { hits: Mutex::new(0), ports: RwLock::new(ports) });
    let (a, b) = tokio::join!(serve(state.clone(), "http"), serve(Arc::clone(&state), "ws"));
    a?;
    b
}
`, ` => loopback 12961 & loopback 12962
HTTP_PORT=12211 WS_PORT=12212 => loopback 12211 & loopback 12212`},
	{"Rust: hyper with clap and fallthrough settings", `-- Procfile --
web: ./target/debug/gate --level loud
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tokio = { version = "1", features = ["full"] }
hyper = { version = "0.14", features = ["full"] }
clap = { version = "4", features = ["derive", "env"] }
-- src/main.rs --
use clap::{Parser, ValueEnum};
use hyper::service::{make_service_fn, service_fn};
use hyper::{Body, Method, Request, Response, Server, StatusCode};
use std::convert::Infallible;
use std::net::{IpAddr, SocketAddr};

#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
enum Level { Quiet, Normal, Loud }

#[derive(Parser, Debug, Clone)]
#[command(author, version, about, long_about = None)]
struct Opt {
    #[arg(long, env = "GATE_ADDR", default_value = "::")]
    addr: IpAddr,
    #[arg(long, short = 'P', env = "GATE_PORT", default_value = "12963", value_parser = clap::value_parser!(u16).range(1024..))]
    port: u16,
    #[arg(long, value_enum, default_value_t = Level::Normal)]
    level: Level,
}

async fn route(req: Request<Body>) -> Result<Response<Body>, Infallible> {
    Ok(match (req.method(), req.uri().path()) {
        (&Method::GET, "/") => Response::new(Body::from("ok")),
        _ => Response::builder().status(StatusCode::NOT_FOUND).body(Body::empty()).unwrap(),
    })
}

#[tokio::main]
async fn main() -> Result<(), Box<dyn std::error::Error + Send + Sync>> {
    let opt = Opt::parse();
    let addr: SocketAddr = (opt.addr, opt.port).into();
    if opt.level != Level::Quiet {
        println!("http://{addr}");
    }
    let svc = make_service_fn(|_| async { Ok::<_, Infallible>(service_fn(route)) });
    Server::try_bind(&addr)?.serve(svc).await?;
    Ok(())
}
`, ` => any 12963
GATE_ADDR=127.0.0.1 GATE_PORT=12213 => loopback 12213
GATE_PORT=99999 => exits`},
	{"Rust: clap builder with subcommand", `-- Procfile --
web: ./target/debug/gate serve --public
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = { version = "4", features = ["env", "cargo"] }
-- src/main.rs --
use clap::{value_parser, Arg, ArgAction, Command};
use std::net::TcpListener;

fn cli() -> Command {
    Command::new("gate")
        .subcommand_required(true)
        .subcommand(
            Command::new("serve")
                .arg(Arg::new("port").long("port").short('p').env("PORT").value_parser(value_parser!(u16)).default_value("12964"))
                .arg(Arg::new("public").long("public").action(ArgAction::SetTrue)),
        )
        .subcommand(Command::new("check"))
}

fn main() {
    let matches = cli().get_matches();
    match matches.subcommand() {
        Some(("serve", sub)) => {
            let port = *sub.get_one::<u16>("port").expect("has a default");
            let host = if sub.get_flag("public") { "0.0.0.0" } else { "127.0.0.1" };
            let l = TcpListener::bind((host, port)).unwrap();
            for _ in l.incoming() {}
        }
        Some(("check", _)) => println!("fine"),
        _ => unreachable!(),
    }
}
`, ` => any 12964
PORT=12214 => any 12214`},
	{"Rust: panic in thread and recover", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::thread;

fn preferred() -> u16 {
    let v = std::env::var("PORT").expect("PORT");
    v.parse().unwrap()
}

fn main() {
    let port = thread::spawn(preferred).join().unwrap_or(12215);
    if std::env::var("FAIL").is_ok() {
        let r = std::panic::catch_unwind(|| { panic!("no") });
        assert!(r.is_err());
    }
    let l = TcpListener::bind(format!("0.0.0.0:{port:>05}")).unwrap();
    for _ in l.incoming() {}
}
`, ` => any 12215
FAIL=1 => any 12215`},
	{"Rust: state machine and while let", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::collections::VecDeque;
use std::net::TcpListener;

#[derive(Debug, Clone, Copy)]
enum Step { Up, Down, Stay }

impl From<&str> for Step {
    fn from(s: &str) -> Self {
        match s { "up" => Step::Up, "down" => Step::Down, _ => Step::Stay }
    }
}

struct Machine { port: u16, log: Vec<u16> }

impl Machine {
    fn apply(&mut self, step: Step) -> &mut Self {
        let before = self.port;
        self.port = match step {
            Step::Up => before + 1,
            Step::Down => before.saturating_sub(1),
            Step::Stay => before,
        };
        self.log.push(before);
        self
    }
}

fn main() {
    let steps = std::env::var("STEPS").unwrap_or_default();
    let mut queue: VecDeque<Step> = steps.split(',').map(Step::from).collect();
    let mut m = Machine { port: 12216, log: vec![] };
    while let Some(step) = queue.pop_front() {
        m.apply(step);
    }
    let max = m.log.iter().max().copied().unwrap_or(m.port);
    let l = TcpListener::bind(("0.0.0.0", m.port.max(max))).unwrap();
    l.incoming().for_each(|_| ());
}
`, ` => any 12216
STEPS=up,up,down => any 12218
STEPS=up,left => any 12217`},
	{"Rust: env vars with a prefix", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::collections::BTreeMap;
use std::env;
use std::net::TcpListener;

#[derive(Debug)]
enum Node { Leaf(String), Tree(BTreeMap<String, Node>) }

impl Node {
    fn insert(&mut self, path: &[&str], value: String) {
        if let Node::Tree(map) = self {
            match path {
                [last] => { map.insert(last.to_string(), Node::Leaf(value)); }
                [head, rest @ ..] => map.entry(head.to_string()).or_insert_with(|| Node::Tree(BTreeMap::new())).insert(rest, value),
                [] => {}
            }
        }
    }
    fn get(&self, path: &str) -> Option<&str> {
        let mut at = self;
        for part in path.split('.') {
            at = match at { Node::Tree(m) => m.get(part)?, Node::Leaf(_) => return None };
        }
        match at { Node::Leaf(v) => Some(v), _ => None }
    }
}

fn main() {
    let mut root = Node::Tree(BTreeMap::new());
    root.insert(&["server", "port"], "12967".into());
    for (key, value) in env::vars() {
        if let Some(rest) = key.strip_prefix("OBS__") {
            let lower = rest.to_lowercase();
            let parts: Vec<&str> = lower.split("__").collect();
            root.insert(&parts, value);
        }
    }
    let port = root.get("server.port").and_then(|p| p.parse().ok()).unwrap_or(1);
    let host = root.get("server.host").unwrap_or("127.0.0.1");
    let l = TcpListener::bind((host, port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12967
OBS__SERVER__PORT=12217 OBS__SERVER__HOST=0.0.0.0 => any 12217`},
	{"Rust: hex and arithmetic", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::{Ipv4Addr, TcpListener};

const BASE: u32 = 0x2FB9;
const MASK: u32 = 0b1111_1111_1111_1111;

fn main() {
    let n = match std::env::var("PORT_HEX") {
        Ok(h) => u32::from_str_radix(h.trim_start_matches("0x"), 16).unwrap_or_else(|_| BASE + 3),
        _ => (BASE | 1) & MASK,
    };
    let port = u16::try_from(n).unwrap();
    let octets = [127u8, 0, 0, (n % 2 == 0) as u8 + 1];
    let ip = Ipv4Addr::from([octets[0], octets[1], octets[2], 1]);
    println!("{octets:?} {:#x}", n);
    let l = TcpListener::bind((ip, port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12217
PORT_HEX=2fba => loopback 12218
PORT_HEX=zz => loopback 12220`},
	{"Rust: retry bind loop", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;
use std::{io, thread, time::Duration};

fn bind_with_retry(addr: &str, attempts: u32) -> io::Result<TcpListener> {
    let mut last = None;
    for attempt in 1..=attempts {
        match TcpListener::bind(addr) {
            Ok(l) => return Ok(l),
            Err(e) => {
                last = Some(e);
                thread::sleep(Duration::from_millis(50 * u64::from(attempt)));
            }
        }
    }
    Err(last.unwrap_or_else(|| io::Error::new(io::ErrorKind::Other, "no attempt")))
}

fn main() -> io::Result<()> {
    let port = std::env::var("PORT").unwrap_or_else(|_| 12969.to_string());
    let l = bind_with_retry(&format!("0.0.0.0:{}", port.trim()), 3)?;
    l.set_nonblocking(false)?;
    for s in l.incoming() { s?; }
    Ok(())
}
`, ` => any 12969
PORT=12219 => any 12219`},
	{"Rust: impl Iterator and generics", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;

struct Ports { now: u16, step: u16 }

impl Iterator for Ports {
    type Item = u16;
    fn next(&mut self) -> Option<u16> {
        let n = self.now;
        self.now = self.now.checked_add(self.step)?;
        Some(n)
    }
}

fn pick<I>(it: I, skip: usize) -> Option<I::Item>
where
    I: Iterator,
{
    it.skip(skip).next()
}

fn main() {
    let skip = std::env::var("SKIP").map(|s| s.parse().unwrap()).unwrap_or(0);
    let port = pick(Ports { now: 12220, step: 7 }.filter(|p| p % 2 == 0), skip).unwrap();
    let l = TcpListener::bind(("0.0.0.0", port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => any 12220
SKIP=2 => any 12248`},
	{"Rust: cow option combos", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::borrow::Cow;
use std::net::TcpListener;

fn normalise(raw: &str) -> Cow<'_, str> {
    match (raw.find(':'), raw.len()) {
        (_, 0) => Cow::Borrowed("0.0.0.0:12971"),
        (Some(0), _) => Cow::Owned(format!("0.0.0.0{raw}")),
        (Some(_), _) => Cow::Borrowed(raw),
        (None, _) => Cow::Owned(raw.to_owned() + ":12971"),
    }
}

fn main() {
    let raw = std::env::var("BIND").unwrap_or_else(|_| String::from("127.0.0.1:12222"));
    let addr = normalise(&raw);
    let l = TcpListener::bind(addr.as_ref()).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 12222
BIND=:12221 => any 12221
BIND=127.0.0.1 => loopback 12971`},
	{"Rust: serde json nested enum", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
serde = { version = "1", features = ["derive"] }
serde_json = "1"
-- gate.json --
{"mode": "production", "listeners": [{"name": "web", "port": 12223}, {"name": "admin", "host": "127.0.0.1", "port": 12224}]}
-- other.json --
{"mode": "development", "listeners": [{"name": "web", "host": "::1", "port": 12225}]}
-- src/main.rs --
use serde::Deserialize;
use std::fs::File;
use std::io::BufReader;
use std::net::TcpListener;
use std::path::Path;

#[derive(Debug, Deserialize, PartialEq)]
#[serde(rename_all = "lowercase")]
enum Mode { Development, Production }

#[derive(Debug, Deserialize)]
struct Listen {
    name: String,
    #[serde(default)]
    host: Option<String>,
    port: u16,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct Config { mode: Mode, listeners: Vec<Listen> }

fn load<P: AsRef<Path>>(path: P) -> Result<Config, Box<dyn std::error::Error>> {
    let reader = BufReader::new(File::open(path)?);
    Ok(serde_json::from_reader(reader)?)
}

fn main() {
    let path = std::env::var("GATE_CONFIG").unwrap_or_else(|_| "gate.json".into());
    let config = load(&path).unwrap_or_else(|e| { eprintln!("{path}: {e}"); std::process::exit(1) });
    let fallback = if config.mode == Mode::Production { "0.0.0.0" } else { "127.0.0.1" };
    let web = config.listeners.iter().find(|l| l.name == "web").unwrap();
    let host = web.host.as_deref().unwrap_or(fallback);
    let l = TcpListener::bind((host, web.port)).unwrap();
    for _ in l.incoming() {}
}
`, ` => any 12223
GATE_CONFIG=other.json => loopback 12225
GATE_CONFIG=none.json => exits`},
	{"Rust: tiny http in pool with once cell", `-- Procfile --
web: ./target/debug/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
[dependencies]
tiny_http = "0.12"
-- src/main.rs --
use std::sync::{Arc, Once};
use std::thread;
use tiny_http::{Header, Method, Response, Server};

static INIT: Once = Once::new();

fn main() {
    INIT.call_once(|| std::env::set_var("GATE_STARTED", "1"));
    let port = std::env::var("PORT").ok().filter(|p| p.chars().all(|c| c.is_ascii_digit())).unwrap_or("12976".to_string());
    let server = Arc::new(Server::http(("0.0.0.0", port.parse().unwrap())).unwrap());
    let mut guards = Vec::with_capacity(4);
    for _ in 0..4 {
        let server = server.clone();
        guards.push(thread::spawn(move || loop {
            let rq = match server.recv() { Ok(rq) => rq, Err(e) => { println!("error: {}", e); break } };
            let response = match (rq.method(), rq.url()) {
                (Method::Get, "/") => Response::from_string("ok").with_header("Content-Type: text/plain".parse::<Header>().unwrap()),
                _ => Response::from_string("no").with_status_code(404),
            };
            let _ = rq.respond(response);
        }));
    }
    for g in guards { g.join().unwrap(); }
}
`, ` => any 12976
PORT=12226 => any 12226`},
}

func TestRust(t *testing.T) {
	t.Parallel()
	for _, c := range rustPrograms {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
