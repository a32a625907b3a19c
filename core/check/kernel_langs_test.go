package check_test

// Servers in the other languages, for machines that have them.

const acceptRuby = "loop { s.accept.close }\n"
const acceptPHP = "while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }\n"
const acceptRust = `    for s in l.incoming() {
        drop(s);
    }
}
`

var rubyProofs = []proof{
	{"a conversion with a fallback", "ruby", `-- s.rb --
require 'socket'
s = TCPServer.new(ENV.fetch('HOST', '0.0.0.0'), (ENV['PORT'] || 0).to_i)
` + acceptRuby, "ruby s.rb", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"a variable that must be there", "ruby", `-- s.rb --
require 'socket'
s = TCPServer.new('127.0.0.1', Integer(ENV.fetch('PORT')))
` + acceptRuby, "ruby s.rb", []string{"PORT=%d", "PORT=x", ""}},
	{"settings in a module of another file", "ruby", `-- s.rb --
require 'socket'
require_relative 'settings'
s = TCPServer.new(Settings.host, Settings.port)
` + acceptRuby + `-- settings.rb --
module Settings
  HOSTS = { 'production' => '0.0.0.0' }.freeze

  def self.port = ENV['PORT'].to_i

  def self.host
    HOSTS.fetch(ENV['SKY'] || 'test', '127.0.0.1')
  end
end
`, "ruby s.rb", []string{"PORT=%d", "PORT=%d SKY=production", ""}},
	{"an object", "ruby", `-- s.rb --
require 'socket'

class Dome
  attr_reader :port

  def initialize(port: 0)
    @port = port
  end

  def open
    s = TCPServer.new('localhost', port)
    ` + acceptRuby + `  end
end

port = ENV['PORT'].to_s.empty? ? 0 : ENV['PORT'].to_i
Dome.new(port: port).open
`, "ruby s.rb", []string{"PORT=%d", "PORT="}},
	{"a case, and a guard behind", "ruby", `-- s.rb --
require 'socket'
host = case ENV['SKY']
       when 'clear', 'bright' then '0.0.0.0'
       else '127.0.0.1'
       end
abort 'no port' unless ENV.key?('PORT')
s = TCPServer.new(host, ENV['PORT'])
` + acceptRuby, "ruby s.rb", []string{"PORT=%d SKY=bright", "PORT=%d", ""}},
}

var phpProofs = []proof{
	{"a fallback", "php", `-- s.php --
<?php
$port = getenv('PORT') ?: 0;
$s = stream_socket_server("tcp://0.0.0.0:$port");
` + acceptPHP, "php s.php", []string{"PORT=%d", "PORT=", "PORT=x"}},
	{"a function with types", "php", `-- s.php --
<?php
function port(string $name, int $default = 0): int {
  $p = getenv($name);
  return is_numeric($p) ? (int) $p : $default;
}
$s = stream_socket_server(sprintf('tcp://%s:%d', getenv('HOST') ?: '127.0.0.1', port('PORT')));
` + acceptPHP, "php s.php", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT=x"}},
	{"an object and an array from a file", "php", `-- s.php --
<?php
final class Settings {
  public function __construct(private array $values, public readonly string $host = '0.0.0.0') {}
  public function get(string $key) { return $this->values[$key] ?? null; }
}
$settings = new Settings(require __DIR__ . '/values.php');
$s = stream_socket_server("tcp://{$settings->host}:{$settings->get('port')}");
` + acceptPHP + `-- values.php --
<?php
return ['port' => $_SERVER['PORT'] ?? 0];
`, "php s.php", []string{"PORT=%d", ""}},
	{"a class that another comes from", "php", `-- s.php --
<?php
abstract class Server {
  protected int $port = 0;
  public function run(): void {
    $s = stream_socket_server('tcp://127.0.0.1:' . $this->port);
    ` + acceptPHP + `  }
}
class Gate extends Server {
  public function __construct() { if ($p = getenv('PORT')) { $this->port = (int) $p; } }
}
(new Gate())->run();
`, "php s.php", []string{"PORT=%d", "PORT="}},
	{"its own server", "php", "-- public/index.php --\n<?php echo 'clear';\n", "php -S ${HOST:-127.0.0.1}:$PORT -t public", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", ""}},
	{"an option of the command", "php", `-- s.php --
<?php
$options = getopt('p:', ['port:']);
$s = stream_socket_server('tcp://0.0.0.0:' . ($options['port'] ?? $options['p'] ?? 0));
` + acceptPHP, "php s.php --port=$PORT", []string{"PORT=%d"}},
}

var javaProofs = []proof{
	{"the library's server", "java", `-- Dome.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

class Dome {
  public static void main(String[] args) throws Exception {
    String port = System.getenv("PORT");
    var at = new InetSocketAddress(port == null ? 0 : Integer.parseInt(port));
    HttpServer.create(at, 0).start();
  }
}
`, "java Dome.java", []string{"PORT=%d", "PORT="}},
	{"a socket, and settings", "java", `-- Dome.java --
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.Optional;

class Dome {
  record Settings(String host, int port) {
    static Settings load() {
      var host = System.getenv().getOrDefault("HOST", "localhost");
      return new Settings(host, Optional.ofNullable(System.getenv("PORT")).map(Integer::parseInt).orElse(0));
    }
  }

  public static void main(String[] args) throws Exception {
    Settings s = Settings.load();
    try (var socket = new ServerSocket(s.port(), 50, InetAddress.getByName(s.host()))) {
      while (true) socket.accept().close();
    }
  }
}
`, "java Dome.java", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0"}},
	{"a property and an argument", "java", `-- Dome.java --
import java.net.ServerSocket;

class Dome {
  static final String SKY = System.getProperty("sky", "cloudy");

  public static void main(String[] args) throws Exception {
    int port = switch (SKY) {
      case "clear" -> Integer.parseInt(args[0]);
      default -> 0;
    };
    new ServerSocket(port).accept();
  }
}
`, "java -Dsky=clear Dome.java $PORT", []string{"PORT=%d", ""}},
}

var denoProofs = []proof{
	{"Deno.serve", "deno", `-- s.ts --
const port: number = Number(Deno.env.get("PORT") ?? 0);
Deno.serve({ port, hostname: Deno.env.get("HOST") || "0.0.0.0" }, () => new Response("clear"));
`, "deno run --allow-net --allow-env s.ts", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"deno serve", "deno", "-- s.ts --\nexport default { fetch() { return new Response(\"clear\"); } };\n", "deno serve --port ${PORT:-0} --host 127.0.0.1 s.ts", []string{"PORT=%d"}},
}

var bunProofs = []proof{
	{"Bun.serve by itself", "bun", "-- s.ts --\nBun.serve({ fetch: () => new Response(\"clear\") });\n", "bun s.ts", []string{"PORT=%d", "BUN_PORT=%d"}},
	{"Bun.serve with a port", "bun", `-- s.ts --
import { port } from "./settings";
Bun.serve({ port, hostname: Bun.env.HOST, fetch: () => new Response("clear") });
-- settings.ts --
export const port = parseInt(process.env.DOME_PORT || "0");
`, "bun s.ts", []string{"DOME_PORT=%d", "DOME_PORT=%d HOST=127.0.0.1"}},
}

var rustProofs = []proof{
	{"results and options", "cargo", `-- src/main.rs --
use std::{env, net::TcpListener};

fn port() -> u16 {
    match env::var("PORT") {
        Ok(p) => p.parse().expect("PORT is a number"),
        Err(_) => 0,
    }
}

fn main() {
    let host = env::var("HOST").ok().filter(|h| !h.is_empty()).unwrap_or_else(|| "0.0.0.0".into());
    let l = TcpListener::bind(format!("{host}:{}", port())).unwrap();
` + acceptRust, "./target/debug/dome", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", "PORT=x", ""}},
	{"a structure in a module", "cargo", `-- src/main.rs --
mod settings;
use settings::Settings;
use std::net::TcpListener;

fn main() {
    let s = Settings::from_env();
    let l = TcpListener::bind((s.host(), s.port)).unwrap();
` + acceptRust + `-- src/settings.rs --
pub enum Sky {
    Clear,
    Cloudy,
}

pub struct Settings {
    pub sky: Sky,
    pub port: u16,
}

impl Settings {
    pub fn from_env() -> Self {
        let sky = if std::env::var("SKY").as_deref() == Ok("clear") { Sky::Clear } else { Sky::Cloudy };
        let port = std::env::var("PORT").ok().and_then(|p| p.parse().ok()).unwrap_or_default();
        Self { sky, port }
    }

    pub fn host(&self) -> &'static str {
        match self.sky {
            Sky::Clear => "0.0.0.0",
            Sky::Cloudy => "127.0.0.1",
        }
    }
}
`, "./target/debug/dome", []string{"PORT=%d", "PORT=%d SKY=clear", "PORT="}},
}

var elixirProofs = []proof{
	{"a socket of Erlang", "elixir", `-- s.exs --
defmodule Dome do
  @default "0"

  def port, do: System.get_env("PORT", @default) |> String.to_integer()

  def ip do
    case System.get_env("SKY") do
      "clear" -> {0, 0, 0, 0}
      _ -> {127, 0, 0, 1}
    end
  end
end

{:ok, l} = :gen_tcp.listen(Dome.port(), [:binary, active: false, ip: Dome.ip()])
:gen_tcp.accept(l)
`, "elixir s.exs", []string{"PORT=%d", "PORT=%d SKY=clear"}},
}

// others are all of them.
func others() []proof {
	var list []proof
	for _, l := range [][]proof{rubyProofs, phpProofs, javaProofs, denoProofs, bunProofs, rustProofs, elixirProofs, moreProofs} {
		list = append(list, l...)
	}
	return list
}
