package check_test

// Servers in the other languages, for machines that have them.

const acceptRuby = "loop { s.accept.close }\n"
const acceptPHP = "while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }\n"
const acceptRust = "    for s in l.incoming() {\n        drop(s);\n    }\n}\n"

var rubyProofs = []proof{
	{"a conversion with a fallback", "ruby", "-- s.rb --\nrequire 'socket'\ns = TCPServer.new(ENV.fetch('HOST', '0.0.0.0'), (ENV['PORT'] || 0).to_i)\n" + acceptRuby, "ruby s.rb", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"a variable that must be there", "ruby", "-- s.rb --\nrequire 'socket'\ns = TCPServer.new('127.0.0.1', Integer(ENV.fetch('PORT')))\n" + acceptRuby, "ruby s.rb", []string{"PORT=%d", "PORT=x", ""}},
	{"settings in a module of another file", "ruby", "-- s.rb --\nrequire 'socket'\nrequire_relative 'settings'\ns = TCPServer.new(Settings.host, Settings.port)\n" + acceptRuby + "-- settings.rb --\nmodule Settings\n  HOSTS = { 'production' => '0.0.0.0' }.freeze\n\n  def self.port = ENV['PORT'].to_i\n\n  def self.host\n    HOSTS.fetch(ENV['SKY'] || 'test', '127.0.0.1')\n  end\nend\n", "ruby s.rb", []string{"PORT=%d", "PORT=%d SKY=production", ""}},
	{"an object", "ruby", "-- s.rb --\nrequire 'socket'\n\nclass Dome\n  attr_reader :port\n\n  def initialize(port: 0)\n    @port = port\n  end\n\n  def open\n    s = TCPServer.new('localhost', port)\n    " + acceptRuby + "  end\nend\n\nport = ENV['PORT'].to_s.empty? ? 0 : ENV['PORT'].to_i\nDome.new(port: port).open\n", "ruby s.rb", []string{"PORT=%d", "PORT="}},
	{"a case, and a guard behind", "ruby", "-- s.rb --\nrequire 'socket'\nhost = case ENV['SKY']\n       when 'clear', 'bright' then '0.0.0.0'\n       else '127.0.0.1'\n       end\nabort 'no port' unless ENV.key?('PORT')\ns = TCPServer.new(host, ENV['PORT'])\n" + acceptRuby, "ruby s.rb", []string{"PORT=%d SKY=bright", "PORT=%d", ""}},
}

var phpProofs = []proof{
	{"a fallback", "php", "-- s.php --\n<?php\n$port = getenv('PORT') ?: 0;\n$s = stream_socket_server(\"tcp://0.0.0.0:$port\");\n" + acceptPHP, "php s.php", []string{"PORT=%d", "PORT=", "PORT=x"}},
	{"a function with types", "php", "-- s.php --\n<?php\nfunction port(string $name, int $default = 0): int {\n  $p = getenv($name);\n  return is_numeric($p) ? (int) $p : $default;\n}\n$s = stream_socket_server(sprintf('tcp://%s:%d', getenv('HOST') ?: '127.0.0.1', port('PORT')));\n" + acceptPHP, "php s.php", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", "PORT=x"}},
	{"an object and an array from a file", "php", "-- s.php --\n<?php\nfinal class Settings {\n  public function __construct(private array $values, public readonly string $host = '0.0.0.0') {}\n  public function get(string $key) { return $this->values[$key] ?? null; }\n}\n$settings = new Settings(require __DIR__ . '/values.php');\n$s = stream_socket_server(\"tcp://{$settings->host}:{$settings->get('port')}\");\n" + acceptPHP + "-- values.php --\n<?php\nreturn ['port' => $_SERVER['PORT'] ?? 0];\n", "php s.php", []string{"PORT=%d", ""}},
	{"a class that another comes from", "php", "-- s.php --\n<?php\nabstract class Server {\n  protected int $port = 0;\n  public function run(): void {\n    $s = stream_socket_server('tcp://127.0.0.1:' . $this->port);\n    " + acceptPHP + "  }\n}\nclass Gate extends Server {\n  public function __construct() { if ($p = getenv('PORT')) { $this->port = (int) $p; } }\n}\n(new Gate())->run();\n", "php s.php", []string{"PORT=%d", "PORT="}},
	{"its own server", "php", "-- public/index.php --\n<?php echo 'clear';\n", "php -S ${HOST:-127.0.0.1}:$PORT -t public", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0", ""}},
	{"an option of the command", "php", "-- s.php --\n<?php\n$options = getopt('p:', ['port:']);\n$s = stream_socket_server('tcp://0.0.0.0:' . ($options['port'] ?? $options['p'] ?? 0));\n" + acceptPHP, "php s.php --port=$PORT", []string{"PORT=%d"}},
}

var javaProofs = []proof{
	{"the library's server", "java", "-- Dome.java --\nimport com.sun.net.httpserver.HttpServer;\nimport java.net.InetSocketAddress;\n\nclass Dome {\n  public static void main(String[] args) throws Exception {\n    String port = System.getenv(\"PORT\");\n    var at = new InetSocketAddress(port == null ? 0 : Integer.parseInt(port));\n    HttpServer.create(at, 0).start();\n  }\n}\n", "java Dome.java", []string{"PORT=%d", "PORT="}},
	{"a socket, and settings", "java", "-- Dome.java --\nimport java.net.InetAddress;\nimport java.net.ServerSocket;\nimport java.util.Optional;\n\nclass Dome {\n  record Settings(String host, int port) {\n    static Settings load() {\n      var host = System.getenv().getOrDefault(\"HOST\", \"localhost\");\n      return new Settings(host, Optional.ofNullable(System.getenv(\"PORT\")).map(Integer::parseInt).orElse(0));\n    }\n  }\n\n  public static void main(String[] args) throws Exception {\n    Settings s = Settings.load();\n    try (var socket = new ServerSocket(s.port(), 50, InetAddress.getByName(s.host()))) {\n      while (true) socket.accept().close();\n    }\n  }\n}\n", "java Dome.java", []string{"PORT=%d", "PORT=%d HOST=0.0.0.0"}},
	{"a property and an argument", "java", "-- Dome.java --\nimport java.net.ServerSocket;\n\nclass Dome {\n  static final String SKY = System.getProperty(\"sky\", \"cloudy\");\n\n  public static void main(String[] args) throws Exception {\n    int port = switch (SKY) {\n      case \"clear\" -> Integer.parseInt(args[0]);\n      default -> 0;\n    };\n    new ServerSocket(port).accept();\n  }\n}\n", "java -Dsky=clear Dome.java $PORT", []string{"PORT=%d", ""}},
}

var denoProofs = []proof{
	{"Deno.serve", "deno", "-- s.ts --\nconst port: number = Number(Deno.env.get(\"PORT\") ?? 0);\nDeno.serve({ port, hostname: Deno.env.get(\"HOST\") || \"0.0.0.0\" }, () => new Response(\"clear\"));\n", "deno run --allow-net --allow-env s.ts", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", ""}},
	{"deno serve", "deno", "-- s.ts --\nexport default { fetch() { return new Response(\"clear\"); } };\n", "deno serve --port ${PORT:-0} --host 127.0.0.1 s.ts", []string{"PORT=%d"}},
}

var bunProofs = []proof{
	{"Bun.serve by itself", "bun", "-- s.ts --\nBun.serve({ fetch: () => new Response(\"clear\") });\n", "bun s.ts", []string{"PORT=%d", "BUN_PORT=%d"}},
	{"Bun.serve with a port", "bun", "-- s.ts --\nimport { port } from \"./settings\";\nBun.serve({ port, hostname: Bun.env.HOST, fetch: () => new Response(\"clear\") });\n-- settings.ts --\nexport const port = parseInt(process.env.DOME_PORT || \"0\");\n", "bun s.ts", []string{"DOME_PORT=%d", "DOME_PORT=%d HOST=127.0.0.1"}},
}

var rustProofs = []proof{
	{"results and options", "cargo", "-- src/main.rs --\nuse std::{env, net::TcpListener};\n\nfn port() -> u16 {\n    match env::var(\"PORT\") {\n        Ok(p) => p.parse().expect(\"PORT is a number\"),\n        Err(_) => 0,\n    }\n}\n\nfn main() {\n    let host = env::var(\"HOST\").ok().filter(|h| !h.is_empty()).unwrap_or_else(|| \"0.0.0.0\".into());\n    let l = TcpListener::bind(format!(\"{host}:{}\", port())).unwrap();\n" + acceptRust, "./target/debug/dome", []string{"PORT=%d", "PORT=%d HOST=127.0.0.1", "PORT=x", ""}},
	{"a structure in a module", "cargo", "-- src/main.rs --\nmod settings;\nuse settings::Settings;\nuse std::net::TcpListener;\n\nfn main() {\n    let s = Settings::from_env();\n    let l = TcpListener::bind((s.host(), s.port)).unwrap();\n" + acceptRust + "-- src/settings.rs --\npub enum Sky {\n    Clear,\n    Cloudy,\n}\n\npub struct Settings {\n    pub sky: Sky,\n    pub port: u16,\n}\n\nimpl Settings {\n    pub fn from_env() -> Self {\n        let sky = if std::env::var(\"SKY\").as_deref() == Ok(\"clear\") { Sky::Clear } else { Sky::Cloudy };\n        let port = std::env::var(\"PORT\").ok().and_then(|p| p.parse().ok()).unwrap_or_default();\n        Self { sky, port }\n    }\n\n    pub fn host(&self) -> &'static str {\n        match self.sky {\n            Sky::Clear => \"0.0.0.0\",\n            Sky::Cloudy => \"127.0.0.1\",\n        }\n    }\n}\n", "./target/debug/dome", []string{"PORT=%d", "PORT=%d SKY=clear", "PORT="}},
}

var elixirProofs = []proof{
	{"a socket of Erlang", "elixir", "-- s.exs --\ndefmodule Dome do\n  @default \"0\"\n\n  def port, do: System.get_env(\"PORT\", @default) |> String.to_integer()\n\n  def ip do\n    case System.get_env(\"SKY\") do\n      \"clear\" -> {0, 0, 0, 0}\n      _ -> {127, 0, 0, 1}\n    end\n  end\nend\n\n{:ok, l} = :gen_tcp.listen(Dome.port(), [:binary, active: false, ip: Dome.ip()])\n:gen_tcp.accept(l)\n", "elixir s.exs", []string{"PORT=%d", "PORT=%d SKY=clear"}},
}

// others are all of them.
func others() []proof {
	var list []proof
	for _, l := range [][]proof{rubyProofs, phpProofs, javaProofs, denoProofs, bunProofs, rustProofs, elixirProofs} {
		list = append(list, l...)
	}
	return list
}
