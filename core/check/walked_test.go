package check_test

import "testing"

// walked are programs of Ruby, Java and PHP that make the address they listen on
// in ways of their own, as those of traced do. Each was run in the environments
// that stand beside it; what it did was read from the kernel.
var walked = []struct{ name, tree, want string }{
	{"Ruby: class with method missing free config", `-- Procfile --
web: ruby main.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- lib/settings.rb --
class Settings
  DEFAULTS = {
    "development" => { host: "127.0.0.1", port: 8711 },
    "production" => { host: "0.0.0.0", port: 80 },
  }.freeze

  def initialize(env)
    @env = env
    @values = DEFAULTS.fetch(env.fetch("RACK_ENV", "development")).dup
    @values[:port] = Integer(env["PORT"]) if env.key?("PORT")
  end

  def host = @values[:host]

  def port
    @values.fetch(:port)
  end
end
-- main.rb --
require "webrick"
require_relative "lib/settings"

settings = Settings.new(ENV)
WEBrick::HTTPServer.new(Port: settings.port, BindAddress: settings.host).start
`, ` => loopback 8711
PORT=5123 RACK_ENV=production => any 5123`},
	{"Ruby: args by hand", `-- Procfile --
web: ruby gate.rb --port 8712 --bind 0.0.0.0
-- gate.rb --
require "socket"

options = { port: ENV.fetch("PORT", "8000"), bind: "127.0.0.1" }
args = ARGV.dup
until args.empty?
  case (word = args.shift)
  when "--port" then options[:port] = args.shift
  when "--bind" then options[:bind] = args.shift
  else abort "what is #{word}?"
  end
end

server = TCPServer.new(options[:bind], options[:port].to_i)
loop do
  client = server.accept
  client.close
end
`, ` => any 8712
PORT=5123 => any 8712`},
	{"Ruby: module with each and to_h", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"

PREFIX = "SKY_"
given = ENV.select { |k, _| k.start_with?(PREFIX) }.map { |k, v| [k.delete_prefix(PREFIX).downcase.to_sym, v] }.to_h
config = { host: "0.0.0.0", port: "8713" }.merge(given)
Socket.tcp_server_loop(config[:host], config[:port]) { |s, _| s.close }
`, ` => any 8713
SKY_PORT=5123 => any 5123
SKY_HOST=127.0.0.1 => loopback 8713`},
	{"Ruby: begin rescue", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"

def port
  Integer(ENV.fetch("PORT"))
rescue KeyError
  8714
rescue ArgumentError => e
  warn "PORT: #{e.message}"
  8715
end

TCPServer.open("0.0.0.0", port) { |server| loop { server.accept.close } }
`, ` => any 8714
PORT=5123 => any 5123
PORT=abc => any 8715`},
	{"PHP: class with static and array", `-- Procfile --
web: php server.php
-- src/Config.php --
<?php
namespace Gate;

class Config
{
    private array $values = ['host' => '0.0.0.0', 'port' => 8721];

    public static function load(): static
    {
        $config = new static();
        foreach (['host', 'port'] as $key) {
            $value = getenv('APP_' . strtoupper($key));
            if ($value !== false) {
                $config->values[$key] = $value;
            }
        }
        return $config;
    }

    public function get(string $key, mixed $default = null): mixed
    {
        return $this->values[$key] ?? $default;
    }

    public function address(): string
    {
        return "tcp://{$this->get('host')}:{$this->get('port')}";
    }
}
-- server.php --
<?php
require __DIR__ . '/src/Config.php';

use Gate\Config;

$server = stream_socket_server(Config::load()->address());
while ($c = @stream_socket_accept($server, 3600)) {
    fclose($c);
}
`, ` => any 8721
APP_PORT=5123 => any 5123`},
	{"PHP: dotenv of own", `-- Procfile --
web: php -S ${BIND:-0.0.0.0}:${PORT:-8723} -t public public/index.php
-- public/index.php --
<?php
echo 'ok';
`, ` => any 8723
PORT=5123 BIND=127.0.0.1 => loopback 5123`},
	{"Java: map of args", `-- Procfile --
web: java src/Gate.java --port 8731 --host 127.0.0.1
-- src/Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.Map;

public class Gate {
    public static void main(String[] args) throws Exception {
        Map<String, String> options = new HashMap<>();
        options.put("port", System.getenv().getOrDefault("PORT", "8000"));
        options.put("host", "0.0.0.0");
        for (int i = 0; i + 1 < args.length; i += 2) {
            options.put(args[i].replaceFirst("^--", ""), args[i + 1]);
        }
        int port = Integer.parseInt(options.get("port"));
        HttpServer.create(new InetSocketAddress(options.get("host"), port), 0).start();
    }
}
`, ` => loopback 8731
PORT=5123 => loopback 8731`},
	{"Java: interface and implementations", `-- Procfile --
web: java src/Sky.java
-- src/Sky.java --
import java.net.*;
import java.util.function.Supplier;

public class Sky {
    interface Settings {
        String host();
        default int port() { return 8732; }
    }

    static class Dev implements Settings {
        public String host() { return "localhost"; }
    }

    static class Live implements Settings {
        public String host() { return "0.0.0.0"; }
        @Override public int port() { return Integer.parseInt(System.getenv("PORT")); }
    }

    public static void main(String[] args) throws Exception {
        Supplier<Settings> make = "live".equals(System.getenv("SKY_ENV")) ? Live::new : Dev::new;
        Settings s = make.get();
        try (ServerSocket server = new ServerSocket(s.port(), 10, InetAddress.getByName(s.host()))) {
            while (true) server.accept().close();
        }
    }
}
`, ` => loopback 8732
SKY_ENV=live PORT=5123 => any 5123`},
	{"Java: stream of candidates", `-- Procfile --
web: java src/Ticker.java
-- src/Ticker.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Objects;
import java.util.stream.Stream;

public class Ticker {
    public static void main(String[] args) throws Exception {
        int port = Stream.of("APP_PORT", "PORT")
            .map(System::getenv)
            .filter(Objects::nonNull)
            .map(String::trim)
            .filter(s -> !s.isEmpty())
            .mapToInt(Integer::parseInt)
            .findFirst()
            .orElse(8733);
        var server = HttpServer.create();
        server.bind(new InetSocketAddress(port), 0);
        server.start();
    }
}
`, ` => any 8733
APP_PORT=5123 => any 5123`},
	{"Ruby: tcp optparse", `-- Procfile --
web: ruby gate.rb --port ${PORT:-7710}
-- gate.rb --
require 'socket'
require 'optparse'
opts = { host: '0.0.0.0', port: 7711 }
OptionParser.new do |o|
  o.on('-p', '--port N', Integer) { |n| opts[:port] = n }
  o.on('-h', '--host H') { |h| opts[:host] = h }
end.parse!
server = TCPServer.new(opts[:host], opts[:port])
loop do
  c = server.accept
  c.write "HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\nok"
  c.close
end
`, ` => any 7710
PORT=5123 => any 5123
PORT= => any 7710`},
	{"Ruby: webrick settings class", `-- Procfile --
web: ruby bin/serve.rb
-- bin/serve.rb --
require_relative '../lib/settings'
require 'webrick'
s = Dome::Settings.load
srv = WEBrick::HTTPServer.new(BindAddress: s.host, Port: s.port)
srv.mount_proc('/') { |_q, r| r.body = 'ok' }
trap('TERM') { srv.shutdown }
srv.start
-- lib/settings.rb --
module Dome
  class Settings
    DEFAULTS = { 'PORT' => '7720', 'HOST' => '0.0.0.0' }.freeze
    attr_reader :host, :port
    def self.load
      new(DEFAULTS.merge(ENV.to_h.slice('PORT', 'HOST', 'DOME_PORT')))
    end
    def initialize(values)
      @host = values['HOST']
      @port = (values['DOME_PORT'] || values.fetch('PORT')).to_i
    end
  end
end
`, ` => any 7720
PORT=5123 => any 5123
DOME_PORT=5200 PORT=5123 => any 5200`},
	{"Ruby: yaml env section", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'sinatra'
require 'yaml'
cfg = YAML.load_file(File.join(__dir__, 'config', 'dome.yml'))[settings.environment.to_s]
set :bind, cfg['bind']
set :port, ENV['PORT'] || cfg['port']
get('/') { 'ok' }
-- config/dome.yml --
development:
  bind: 127.0.0.1
  port: 7730
production:
  bind: 0.0.0.0
  port: 7731
`, ` => loopback 7730
RACK_ENV=production => any 7731
RACK_ENV=production PORT=5123 => any 5123`},
	{"Ruby: rack handler", `-- Procfile --
web: ruby serve.rb
-- serve.rb --
require 'rack'
require 'rack/handler/webrick'
app = ->(env) { [200, {}, ['ok']] }
host, port = ENV.values_at('HOST', 'PORT')
host ||= '0.0.0.0'
port = port ? port.to_i : 7750
Rack::Handler::WEBrick.run(app, Host: host, Port: port)
`, ` => any 7750
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 7750`},
	{"Ruby: loop first set", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
port = nil
%w[PORT APP_PORT].each do |name|
  next if ENV[name].nil? || ENV[name].empty?
  port = Integer(ENV[name])
  break
end
port ||= 7770
s = Socket.tcp_server_sockets('0.0.0.0', port)
Socket.accept_loop(s) { |c, _| c.close }
`, ` => any 7770
APP_PORT=5200 => any 5200
APP_PORT=5200 PORT=5123 => any 5123`},
	{"Ruby: case env", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'webrick'
stage = ENV.fetch('APP_ENV', 'development')
port, addr =
  case stage
  when 'production' then [7780, '0.0.0.0']
  when 'staging', 'test' then [(ENV['PORT'] || 7781).to_i, '0.0.0.0']
  else [7782, '127.0.0.1']
  end
WEBrick::HTTPServer.new(Port: port, BindAddress: addr).start
`, ` => loopback 7782
APP_ENV=production => any 7780
APP_ENV=staging PORT=5123 => any 5123`},
	{"Ruby: sinatra modular", `-- Procfile --
web: ruby dome.rb
-- dome.rb --
require 'sinatra/base'
class Dome < Sinatra::Base
  configure :production do
    set :bind, '0.0.0.0'
  end
  configure(:development) { set :port, 7790 }
  get('/') { 'ok' }
  run! if app_file == $0
end
`, ` => loopback 7790
PORT=5123 => loopback 7790
PORT=5123 APP_ENV=production => any 5123`},
	{"PHP: stream server", `-- Procfile --
web: php bin/serve.php
-- bin/serve.php --
<?php
declare(strict_types=1);
require __DIR__ . '/../src/config.php';
$cfg = config();
$s = stream_socket_server(sprintf('tcp://%s:%d', $cfg['host'], $cfg['port']), $no, $msg);
if (!$s) { fwrite(STDERR, $msg); exit(1); }
while ($c = stream_socket_accept($s, -1)) { fwrite($c, "HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\nok"); fclose($c); }
-- src/config.php --
<?php
function config(): array {
    $defaults = ['host' => '0.0.0.0', 'port' => 7820];
    foreach (['HOST' => 'host', 'PORT' => 'port'] as $name => $key) {
        $v = getenv($name);
        if ($v !== false && $v !== '') {
            $defaults[$key] = $key === 'port' ? (int) $v : $v;
        }
    }
    return $defaults;
}
`, ` => any 7820
PORT=5123 => any 5123
PORT=5123 HOST=127.0.0.1 => loopback 5123`},
	{"PHP: passthru", `-- Procfile --
web: php serve
-- serve --
#!/usr/bin/env php
<?php
$port = getenv('PORT') ?: '7830';
$host = getenv('HOST') ?: '0.0.0.0';
passthru(PHP_BINARY . " -S $host:$port -t " . escapeshellarg(__DIR__ . '/web'));
-- web/index.php --
<?php echo 'ok';
`, ` => any 7830
PORT=5123 => any 5123`},
	{"PHP: class config", `-- Procfile --
web: php server.php
-- server.php --
<?php
spl_autoload_register(fn($c) => require __DIR__ . '/src/' . str_replace('\\', '/', $c) . '.php');
$server = new Dome\Server(Dome\Config::fromEnv());
$server->run();
-- src/Dome/Config.php --
<?php
namespace Dome;
final class Config {
    private function __construct(public readonly string $host, public readonly int $port) {}
    public static function fromEnv(): self {
        return new self($_SERVER['DOME_HOST'] ?? '127.0.0.1', (int) ($_SERVER['DOME_PORT'] ?? 7840));
    }
}
-- src/Dome/Server.php --
<?php
namespace Dome;
class Server {
    public function __construct(private Config $config) {}
    public function run(): void {
        $socket = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
        socket_bind($socket, $this->config->host, $this->config->port);
        socket_listen($socket);
        while (true) { $c = socket_accept($socket); socket_close($c); }
    }
}
`, ` => loopback 7840
DOME_PORT=5200 => loopback 5200`},
	{"Java: httpserver args", `-- Procfile --
web: java -cp out Gate --port=$PORT
-- src/Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
public class Gate {
    public static void main(String[] args) throws Exception {
        int port = 7850;
        for (String a : args) {
            if (a.startsWith("--port=") && a.length() > 7) {
                port = Integer.parseInt(a.substring("--port=".length()));
            }
        }
        HttpServer s = HttpServer.create(new InetSocketAddress(port), 0);
        s.createContext("/", e -> { e.sendResponseHeaders(200, 2); e.getResponseBody().write("ok".getBytes()); e.close(); });
        s.start();
    }
}
`, `PORT=5123 => any 5123
PORT= => any 7850`},
	{"Java: properties file", `-- Procfile --
web: java -cp out:resources dome.Main
-- src/dome/Main.java --
package dome;
import com.sun.net.httpserver.HttpServer;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.util.Properties;
public class Main {
    public static void main(String[] args) throws Exception {
        Properties p = new Properties();
        try (InputStream in = Main.class.getResourceAsStream("/dome.properties")) { p.load(in); }
        String env = System.getenv("PORT");
        int port = Integer.parseInt(env != null && !env.isBlank() ? env : p.getProperty("server.port", "7861"));
        String host = p.getProperty("server.host");
        HttpServer s = HttpServer.create(new InetSocketAddress(host, port), 0);
        s.start();
    }
}
-- resources/dome.properties --
# where the gate is
server.host = 0.0.0.0
server.port = 7860
`, ` => any 7860
PORT=5123 => any 5123`},
	{"Java: record config", `-- Procfile --
web: java -cp out dome.App
-- src/dome/App.java --
package dome;
import java.net.ServerSocket;
import java.net.InetAddress;
public class App {
    public static void main(String[] args) throws Exception {
        Config c = Config.from(System.getenv());
        try (ServerSocket s = new ServerSocket(c.port(), 50, InetAddress.getByName(c.host()))) {
            while (true) s.accept().close();
        }
    }
}
-- src/dome/Config.java --
package dome;
import java.util.Map;
import java.util.Optional;
record Config(String host, int port) {
    static Config from(Map<String, String> env) {
        int port = Optional.ofNullable(env.get("PORT")).map(Config::number).orElse(7870);
        return new Config(env.getOrDefault("HOST", "127.0.0.1"), port);
    }
    private static Integer number(String s) {
        try { return Integer.valueOf(s); } catch (NumberFormatException e) { return null; }
    }
}
`, ` => loopback 7870
PORT=5123 => loopback 5123
PORT=x12 => loopback 7870`},
	{"Java: switch profile", `-- Procfile --
web: java -cp out Watch
-- Watch.java --
import java.net.*;
import java.nio.channels.*;
public class Watch {
    static final int BASE = 7880;
    enum Profile { DEV, TEST, PROD }
    static Profile profile() {
        String p = System.getenv("APP_PROFILE");
        return p == null ? Profile.DEV : Profile.valueOf(p.toUpperCase());
    }
    static int port() {
        return switch (profile()) {
            case DEV -> BASE;
            case TEST -> BASE + 1;
            case PROD -> Integer.parseInt(System.getenv().getOrDefault("PORT", "" + (BASE + 2)));
        };
    }
    public static void main(String[] a) throws Exception {
        ServerSocketChannel ch = ServerSocketChannel.open();
        ch.bind(new InetSocketAddress(profile() == Profile.PROD ? "0.0.0.0" : "localhost", port()));
        while (true) ch.accept().close();
    }
}
`, ` => loopback 7880
APP_PROFILE=prod PORT=5123 => any 5123
APP_PROFILE=test => loopback 7881`},
	{"Java: single file", `-- Procfile --
web: java Serve.java ${PORT:-7890}
-- Serve.java --
import com.sun.net.httpserver.*;
import java.net.*;
import java.nio.file.*;
class Serve {
    public static void main(String... args) throws Exception {
        var port = args.length > 0 ? Integer.parseInt(args[0]) : 7891;
        var s = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        s.start();
    }
}
`, ` => loopback 7890
PORT=5123 => loopback 5123`},
	{"Ruby: struct settings", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
Settings = Struct.new(:host, :port, keyword_init: true) do
  def self.from_env(env = ENV)
    new(host: env['DOME_HOST'] || '0.0.0.0', port: env.fetch('PORT') { 9001 }.to_i)
  end

  def to_a
    [host, port]
  end
end
s = Settings.from_env
server = TCPServer.new(*s.to_a)
puts "on #{s.port}"
while (c = server.accept)
  c.close
end
`, ` => any 9001
PORT=5123 => any 5123
DOME_HOST=127.0.0.1 => loopback 9001`},
	{"Ruby: inject first", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
names = %i[a b c]
port = names.map { |n| ENV["#{n.to_s.upcase}_PORT"] }.compact.map(&:to_i).find { |p| p.between?(1024, 65_535) } || 9003
s = TCPServer.new('127.0.0.1', port)
loop { s.accept.close }
`, ` => loopback 9003
B_PORT=5123 => loopback 5123
A_PORT=5124 B_PORT=5123 => loopback 5124`},
	{"Ruby: module functions and memo", `-- Procfile --
web: ruby bin/dome
-- bin/dome --
#!/usr/bin/env ruby
$LOAD_PATH.unshift File.expand_path('../lib', __dir__)
require 'dome'
Dome::Server.new(Dome.config).run
-- lib/dome.rb --
require 'yaml'
require 'dome/server'
module Dome
  class << self
    def env
      @env ||= (ENV['DOME_ENV'] || 'development').to_sym
    end

    def config
      @config ||= begin
        all = YAML.safe_load(File.read(File.join(root, 'config', 'server.yml')), aliases: true)
        base = all['default']
        base.merge(all[env.to_s] || {})
      end
    end

    def root
      File.expand_path('..', __dir__)
    end
  end
end
-- lib/dome/server.rb --
require 'socket'
module Dome
  class Server
    attr_reader :port
    def initialize(cfg)
      @host = cfg.fetch('host')
      @port = ENV.key?('PORT') ? ENV['PORT'].to_i : cfg['port']
    end

    def run
      sock = TCPServer.new(@host, port)
      loop do
        Thread.start(sock.accept) { |c| c.close }
      end
    end
  end
end
-- config/server.yml --
default:
  host: 127.0.0.1
  port: 9004
production:
  host: 0.0.0.0
`, ` => loopback 9004
DOME_ENV=production => any 9004
DOME_ENV=production PORT=5123 => any 5123`},
	{"Ruby: inheritance and super", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
class Base
  def initialize(port: 9005, host: '127.0.0.1')
    @port, @host = port, host
  end
  def listen = TCPServer.new(@host, @port)
end
class Live < Base
  def initialize(**opts)
    super(host: '0.0.0.0', port: (ENV['PORT'] || 9006).to_i, **opts)
  end
end
klass = { 'live' => Live }.fetch(ENV['MODE'].to_s, Base)
srv = klass.new.listen
loop { srv.accept.close }
`, ` => loopback 9005
MODE=live PORT=5123 => any 5123
MODE=live => any 9006`},
	{"Ruby: while and until", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
n = (ENV['SKIP'] || 1).to_i
port = 9007
while n > 0
  port += 10
  n -= 1
end
port -= 1 until port.even?
TCPServer.open('0.0.0.0', port).accept
`, ` => any 9016
SKIP=3 => any 9036`},
	{"Ruby: each_with_object", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
cfg = { 'web' => { 'port' => '9008', 'host' => '0.0.0.0' } }
ENV.each do |k, v|
  next unless k.include?('__')
  *path, last = k.downcase.split('__')
  node = path.inject(cfg) { |h, p| h[p] ||= {} }
  node[last] = v
end
web = cfg['web']
s = TCPServer.new(web['host'], Integer(web['port']))
s.accept while true
`, ` => any 9008
WEB__PORT=5123 WEB__HOST=127.0.0.1 => loopback 5123`},
	{"Ruby: symbol and text keys", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'json'
require 'socket'
cfg = JSON.parse(File.read('cfg.json'), symbolize_names: true)
port = ENV['PORT'] || cfg.dig(:server, :port) || cfg.dig('server', 'port')
host = cfg.dig('server', 'host') || '0.0.0.0'
TCPServer.new(host, port.to_i).accept
-- cfg.json --
{"server": {"host": "127.0.0.1", "port": 9009}}
`, ` => any 9009
PORT=5123 => any 5123`},
	{"Ruby: catch errors", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
class BadPort < StandardError; end
def port
  p = Integer(ENV['PORT'] || '9010')
  raise BadPort, "#{p} is too high" if p > 65_535
  p
rescue ArgumentError
  9011
end
begin
  s = TCPServer.new('0.0.0.0', port)
rescue BadPort => e
  warn e.message
  exit 1
end
s.accept
`, ` => any 9010
PORT=abc => any 9011
PORT=70000 => exits
PORT=5123 => any 5123`},
	{"Ruby: optparse into", `-- Procfile --
web: ruby app.rb -p ${PORT:-9012} --no-public
-- app.rb --
require 'optparse'
require 'webrick'
opts = { public: true }
parser = OptionParser.new do |o|
  o.banner = 'dome'
  o.on('-p', '--port=PORT', Integer)
  o.on('--[no-]public')
  o.on('-e ENV', '--env')
end
parser.parse!(into: opts)
WEBrick::HTTPServer.new(Port: opts[:port], BindAddress: opts[:public] ? '0.0.0.0' : '127.0.0.1').start
`, ` => loopback 9012
PORT=5123 => loopback 5123
PORT=abc => exits`},
	{"Ruby: sinatra classic configure", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'sinatra'
configure :production do
  set :bind, '0.0.0.0'
  set :port, ENV.fetch('PORT', 9014)
end
configure :development, :test do
  set :port, 9013
end
get('/') { 'ok' }
`, ` => loopback 9013
RACK_ENV=production PORT=5123 => any 5123
APP_ENV=production => any 9014`},
	{"Ruby: sinatra settings loop", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'sinatra'
{ port: 'PORT', bind: 'BIND' }.each { |k, n| set k, ENV[n] if ENV[n] }
get('/') { 'ok' }
`, ` => loopback 4567
PORT=5123 BIND=0.0.0.0 => any 5123`},
	{"Ruby: rack builder and handler", `-- Procfile --
web: ruby serve.rb
-- serve.rb --
require 'rack'
app = Rack::Builder.new do
  use Rack::ContentLength
  map('/') { run ->(e) { [200, { 'content-type' => 'text/plain' }, ['ok']] } }
end
options = { Host: '0.0.0.0', Port: 9017 }
options[:Port] = ENV['PORT'].to_i if ENV['PORT']
Rack::Handler::WEBrick.run(app.to_app, **options)
`, ` => any 9017
PORT=5123 => any 5123`},
	{"Ruby: method_missing and define_method", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
class Env
  { port: 9019, host: '127.0.0.1' }.each do |name, default|
    define_method(name) { ENV["SKY_#{name.upcase}"] || default }
  end
end
e = Env.new
TCPServer.new(e.host, e.port).accept
`, ` => loopback 9019
SKY_PORT=5123 => loopback 5123`},
	{"Ruby: case in with ranges", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
port = case ENV['LEVEL'].to_i
       when 0 then 9020
       when 1..9 then 9021
       else 9022
       end
host = case ENV['LEVEL']
       when nil, /\A\d+\z/ then '0.0.0.0'
       when String then '127.0.0.1'
       end
TCPServer.new(host, port).accept
`, ` => any 9020
LEVEL=12 => any 9022
LEVEL=x => loopback 9020`},
	{"Ruby: singleton config", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'singleton'
require 'socket'
class Config
  include Singleton
  attr_accessor :port, :host
  def initialize
    self.port = 9023
    self.host = '127.0.0.1'
  end
  def self.configure
    yield instance
  end
end
Config.configure do |c|
  c.port = ENV['PORT'].to_i if ENV['PORT']
end
TCPServer.new(Config.instance.host, Config.instance.port).accept
`, ` => loopback 9023
PORT=5123 => loopback 5123`},
	{"Ruby: kernel format and heredoc", `-- Procfile --
web: ruby app.rb
-- app.rb --
require 'socket'
node = ENV.fetch('NODE', '1').to_i
port = format('9%03d', node + 23).to_i
addr = '%s:%d' % ['127.0.0.1', port]
host, p = addr.split(':')
TCPServer.new(host, p).accept
`, ` => loopback 9024
NODE=3 => loopback 9026`},
	{"Java: enum with fields", `-- Procfile --
web: java -cp out Gate
-- Gate.java --
import java.net.*;
public class Gate {
    enum Stage {
        DEV("127.0.0.1", 9101), LIVE("0.0.0.0", 9102);
        final String host;
        private final int port;
        Stage(String host, int port) { this.host = host; this.port = port; }
        int port() { return this == LIVE && System.getenv("PORT") != null ? Integer.parseInt(System.getenv("PORT")) : port; }
        static Stage of(String s) {
            for (Stage x : values()) if (x.name().equalsIgnoreCase(s)) return x;
            throw new IllegalArgumentException("no stage " + s);
        }
    }
    public static void main(String[] args) throws Exception {
        String name = System.getenv("STAGE");
        Stage st = name == null ? Stage.DEV : Stage.of(name);
        ServerSocket s = new ServerSocket(st.port(), 10, InetAddress.getByName(st.host));
        for (;;) { s.accept().close(); }
    }
}
`, ` => loopback 9101
STAGE=live PORT=5123 => any 5123
STAGE=nowhere => exits`},
	{"Java: builder", `-- Procfile --
web: java -cp out dome.Main
-- dome/Main.java --
package dome;
import com.sun.net.httpserver.HttpServer;
public class Main {
    public static void main(String[] args) throws Exception {
        ServerConfig.Builder b = ServerConfig.builder();
        Env.get("DOME_PORT").map(Integer::parseInt).ifPresent(b::port);
        Env.get("DOME_HOST").ifPresent(b::host);
        ServerConfig c = b.build();
        HttpServer s = HttpServer.create(c.address(), 0);
        s.createContext("/", ex -> { ex.sendResponseHeaders(204, -1); ex.close(); });
        s.setExecutor(null);
        s.start();
    }
}
-- dome/Env.java --
package dome;
import java.util.Optional;
final class Env {
    private Env() {}
    static Optional<String> get(String name) {
        String v = System.getenv(name);
        return v == null || v.isBlank() ? Optional.empty() : Optional.of(v.trim());
    }
}
-- dome/ServerConfig.java --
package dome;
import java.net.InetSocketAddress;
public class ServerConfig {
    private final String host;
    private final int port;
    private ServerConfig(Builder b) { host = b.host; port = b.port; }
    static Builder builder() { return new Builder(); }
    InetSocketAddress address() { return new InetSocketAddress(host, port); }
    static class Builder {
        private String host = "0.0.0.0";
        private int port = 9103;
        Builder host(String h) { this.host = h; return this; }
        Builder port(int p) { this.port = p; return this; }
        ServerConfig build() { return new ServerConfig(this); }
    }
}
`, ` => any 9103
DOME_PORT=5123 DOME_HOST=127.0.0.1 => loopback 5123`},
	{"Java: args parser map", `-- Procfile --
web: java -cp out App --host 0.0.0.0 --port ${PORT:-9104}
-- App.java --
import java.util.*;
import java.net.*;
public class App {
    public static void main(String[] args) throws Exception {
        Map<String, String> opts = new HashMap<>();
        for (int i = 0; i < args.length; i++) {
            if (args[i].startsWith("--") && i + 1 < args.length) {
                opts.put(args[i].substring(2), args[++i]);
            }
        }
        int port = Integer.parseInt(opts.getOrDefault("port", "9105"));
        new Thread(() -> serve(opts.get("host"), port)).start();
    }
    static void serve(String host, int port) {
        try (var s = new ServerSocket()) {
            s.bind(new InetSocketAddress(host, port));
            while (!Thread.interrupted()) { s.accept().close(); }
        } catch (java.io.IOException e) {
            throw new RuntimeException(e);
        }
    }
}
`, ` => any 9104
PORT=5123 => any 5123`},
	{"Java: stream of names", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
import java.util.*;
import java.util.stream.*;
class App {
    private static final List<String> NAMES = List.of("PORT", "APP_PORT", "SERVER_PORT");
    public static void main(String[] args) throws Exception {
        int port = NAMES.stream().map(System::getenv).filter(Objects::nonNull).filter(s -> !s.isEmpty()).mapToInt(Integer::parseInt).findFirst().orElse(9106);
        new ServerSocket(port).accept();
    }
}
`, ` => any 9106
APP_PORT=5123 => any 5123
PORT= APP_PORT=5123 => any 5123`},
	{"Java: interface and classes", `-- Procfile --
web: java -cp out dome.App
-- src/dome/App.java --
package dome;
import java.net.ServerSocket;
import dome.conf.*;
public class App {
    public static void main(String... a) throws Exception {
        Source s = "env".equals(System.getenv("SOURCE")) ? new EnvSource() : new FixedSource(9107);
        try (ServerSocket ss = new ServerSocket(s.port())) { ss.accept(); }
    }
}
-- src/dome/conf/Source.java --
package dome.conf;
public interface Source {
    int DEFAULT = 9000;
    int port();
    default int shifted(int by) { return port() + by; }
}
-- src/dome/conf/FixedSource.java --
package dome.conf;
public class FixedSource implements Source {
    private final int port;
    public FixedSource(int port) { this.port = port; }
    @Override public int port() { return port; }
}
-- src/dome/conf/EnvSource.java --
package dome.conf;
public class EnvSource implements Source {
    @Override public int port() {
        String p = System.getenv("PORT");
        return p != null ? Integer.parseInt(p) : DEFAULT;
    }
}
`, ` => any 9107
SOURCE=env PORT=5123 => any 5123`},
	{"Java: properties with defaults", `-- Procfile --
web: java -Dgate.profile=live -cp out:src/main/resources Gate
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>observatory</groupId><artifactId>gate</artifactId><version>1</version></project>
-- src/main/java/Gate.java --
import com.sun.net.httpserver.HttpServer;
import java.io.*;
import java.net.InetSocketAddress;
import java.util.Properties;
public class Gate {
    private static final Properties P = new Properties();
    static {
        String profile = System.getProperty("gate.profile", "dev");
        for (String f : new String[] {"/gate.properties", "/gate-" + profile + ".properties"}) {
            try (InputStream in = Gate.class.getResourceAsStream(f)) {
                if (in != null) P.load(in);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }
    static String get(String key) {
        String env = System.getenv(key.replace('.', '_').toUpperCase());
        return env != null ? env : P.getProperty(key);
    }
    public static void main(String[] args) throws Exception {
        HttpServer s = HttpServer.create(new InetSocketAddress(get("gate.host"), Integer.parseInt(get("gate.port"))), 0);
        s.start();
    }
}
-- src/main/resources/gate.properties --
gate.host=127.0.0.1
gate.port=9108
-- src/main/resources/gate-live.properties --
gate.host=0.0.0.0
`, ` => any 9108
GATE_PORT=5123 => any 5123`},
	{"Java: switch on text old style", `-- Procfile --
web: java -cp out App
-- App.java --
import java.net.*;
public class App {
    static int port(String mode) {
        int p;
        switch (mode == null ? "" : mode.toLowerCase()) {
            case "live":
            case "prod":
                p = 9109;
                break;
            case "dev":
                if (System.getenv("PORT") == null) {
                    p = 9110;
                    break;
                }
                p = Integer.parseInt(System.getenv("PORT"));
                break;
            default:
                p = 9111;
        }
        return p;
    }
    public static void main(String[] args) throws Exception {
        new ServerSocket(port(System.getenv("MODE"))).accept();
    }
}
`, ` => any 9111
MODE=dev => any 9110
MODE=live => any 9109`},
	{"Java: bad numbers and limits", `-- Procfile --
web: java -cp out App
-- App.java --
import java.net.*;
public class App {
    private static int port() {
        String s = System.getenv().get("PORT");
        if (s == null) return 9112;
        try {
            int p = Integer.parseInt(s.strip());
            if (p < 1 || p > 65535) throw new IllegalArgumentException("PORT must be 1 to 65535, not " + p);
            return p;
        } catch (NumberFormatException e) {
            System.err.println("PORT: " + e.getMessage());
            return 9113;
        }
    }
    public static void main(String[] args) throws Exception {
        var ch = java.nio.channels.ServerSocketChannel.open();
        ch.bind(new InetSocketAddress("127.0.0.1", port()));
        while (true) ch.accept().close();
    }
}
`, ` => loopback 9112
PORT=0x10 => loopback 9113
PORT=99999 => exits
PORT=5123 => loopback 5123`},
	{"Java: text blocks and formats", `-- Procfile --
web: java App.java
-- App.java --
import java.net.*;
class App {
    public static void main(String[] args) throws Exception {
        String text = """
            host=127.0.0.1
            port=91%02d
            """;
        int n = System.getenv("N") == null ? 16 : Integer.parseInt(System.getenv("N"));
        String host = "0.0.0.0";
        int port = 1;
        for (String line : String.format(text, n).split("\n")) {
            String[] kv = line.split("=", 2);
            if (kv[0].equals("host")) host = kv[1];
            else if (kv[0].equals("port")) port = Integer.parseInt(kv[1]);
        }
        new ServerSocket(port, 5, InetAddress.getByName(host)).accept();
    }
}
`, ` => loopback 9116
N=7 => loopback 9107`},
	{"Java: record compact and static factory", `-- Procfile --
web: java -cp out App
-- App.java --
import java.net.*;
import java.util.function.*;
public class App {
    record Address(String host, int port) {
        Address {
            if (port < 0) throw new IllegalArgumentException("port");
            if (host.isEmpty()) host = "0.0.0.0";
        }
        static Address parse(String s) {
            int i = s.lastIndexOf(':');
            if (i < 0) throw new IllegalStateException("no colon in " + s);
            return new Address(s.substring(0, i), Integer.parseInt(s.substring(i + 1)));
        }
        InetSocketAddress socket() { return new InetSocketAddress(host(), port()); }
    }
    public static void main(String[] args) throws Exception {
        Supplier<String> from = () -> System.getenv("LISTEN");
        String s = from.get();
        Address a = s == null ? new Address("127.0.0.1", 9117) : Address.parse(s);
        var server = com.sun.net.httpserver.HttpServer.create();
        server.bind(a.socket(), 0);
        server.start();
    }
}
`, ` => loopback 9117
LISTEN=0.0.0.0:5123 => any 5123
LISTEN=bad => exits`},
	{"Java: while with iterator and labels", `-- Procfile --
web: java -cp out App
-- App.java --
import java.net.*;
import java.util.*;
public class App {
    public static void main(String[] args) throws Exception {
        Iterator<String> it = Arrays.asList("A", "B", "C").iterator();
        int port = 9118;
        outer:
        while (it.hasNext()) {
            String n = it.next();
            for (String suffix : new String[] {"", "_PORT"}) {
                String v = System.getenv(n + suffix);
                if (v == null) continue;
                if (v.chars().allMatch(Character::isDigit)) { port = Integer.parseInt(v); break outer; }
            }
        }
        new ServerSocket(port).accept();
    }
}
`, ` => any 9118
B=5123 => any 5123`},
	{"PHP: stream with args loop", `-- Procfile --
web: php serve.php --host=0.0.0.0 --port=${PORT:-9201}
-- serve.php --
<?php
$opts = ['host' => '127.0.0.1', 'port' => 9202];
foreach (array_slice($argv, 1) as $arg) {
    if (preg_match('/^--(\w+)=(.+)$/', $arg, $m)) {
        [, $name, $value] = $m;
        $opts[$name] = $value;
    }
}
$srv = stream_socket_server("tcp://{$opts['host']}:{$opts['port']}");
while (true) { $c = @stream_socket_accept($srv, -1); if ($c) fclose($c); }
`, ` => any 9201
PORT=5123 => any 5123`},
	{"PHP: match and enum", `-- Procfile --
web: php app.php
-- app.php --
<?php
enum Stage: string {
    case Dev = 'dev';
    case Live = 'live';
    public static function current(): self { return self::tryFrom(getenv('STAGE') ?: 'dev') ?? self::Dev; }
    public function host(): string { return match ($this) { self::Dev => '127.0.0.1', self::Live => '0.0.0.0' }; }
}
$stage = Stage::current();
$port = match (true) {
    is_numeric(getenv('PORT')) => (int) getenv('PORT'),
    $stage === Stage::Live => 9206,
    default => 9205,
};
$s = stream_socket_server(sprintf('tcp://%s:%04d', $stage->host(), $port), $e, $m);
stream_socket_accept($s, -1);
`, ` => loopback 9205
STAGE=live PORT=5123 => any 5123
STAGE=odd => loopback 9205`},
	{"PHP: exceptions and filter", `-- Procfile --
web: php app.php
-- app.php --
<?php
class BadPort extends InvalidArgumentException {}
function port(string $name, int $default): int {
    $raw = $_ENV[$name] ?? $_SERVER[$name] ?? getenv($name);
    if ($raw === false || $raw === '') return $default;
    $p = filter_var($raw, FILTER_VALIDATE_INT, ['options' => ['min_range' => 1, 'max_range' => 65535]]);
    if ($p === false) throw new BadPort("$name is no port: $raw");
    return $p;
}
try {
    $port = port('PORT', 9207);
} catch (BadPort $e) {
    fwrite(STDERR, $e->getMessage() . PHP_EOL);
    $port = 9208;
}
$s = stream_socket_server("tcp://127.0.0.1:$port");
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => loopback 9207
PORT=abc => loopback 9208
PORT=5123 => loopback 5123
PORT=99999 => loopback 9208`},
	{"PHP: static registry and closures", `-- Procfile --
web: php app.php
-- app.php --
<?php
final class Container {
    private static array $makers = [];
    private static array $made = [];
    public static function set(string $id, callable $maker): void { self::$makers[$id] = $maker; }
    public static function get(string $id): mixed { return self::$made[$id] ??= (self::$makers[$id])(); }
}
$host = '0.0.0.0';
Container::set('port', fn() => (int) (getenv('PORT') ?: 9209));
Container::set('address', function () use ($host) { return $host . ':' . Container::get('port'); });
$s = stream_socket_server('tcp://' . Container::get('address'));
stream_socket_accept($s, -1);
`, ` => any 9209
PORT=5123 => any 5123`},
	{"PHP: json config and overrides", `-- Procfile --
web: php app.php
-- app.php --
<?php
$cfg = json_decode(file_get_contents(__DIR__ . '/config.json'), true);
foreach (getenv() as $k => $v) {
    if (!str_starts_with($k, 'APP__')) continue;
    $ref = &$cfg;
    foreach (explode('__', strtolower(substr($k, 5))) as $part) { $ref = &$ref[$part]; }
    $ref = $v;
    unset($ref);
}
$l = $cfg['listen'];
$s = stream_socket_server("tcp://{$l['host']}:{$l['port']}");
stream_socket_accept($s, -1);
-- config.json --
{"listen": {"host": "127.0.0.1", "port": 9210}}
`, ` => loopback 9210
APP__LISTEN__PORT=5123 => loopback 5123`},
	{"PHP: built in server by exec with env", `-- Procfile --
web: php start.php
-- start.php --
<?php
$cmd = implode(' ', [PHP_BINARY, '-S', escapeshellarg((getenv('HOST') ?: '0.0.0.0') . ':' . (getenv('PORT') ?: 9211)), '-t', 'public']);
exec($cmd, $out, $code);
exit($code);
-- public/index.php --
<?php echo 1;
`, ` => any 9211
PORT=5123 HOST=127.0.0.1 => loopback 5123`},
	{"PHP: dotenv by hand", `-- Procfile --
web: php app.php
-- app.php --
<?php
function load(string $file): void {
    if (!is_file($file)) return;
    foreach (file($file, FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) as $line) {
        if ($line[0] === '#') continue;
        [$k, $v] = array_map('trim', explode('=', $line, 2));
        if (getenv($k) === false) putenv("$k=" . trim($v, '"'));
    }
}
load(__DIR__ . '/.env');
$s = stream_socket_server('tcp://' . getenv('HOST') . ':' . getenv('PORT'));
stream_socket_accept($s, -1);
-- .env --
# the gate
HOST="127.0.0.1"
PORT=9212
`, ` => loopback 9212
PORT=5123 => loopback 5123`},
	{"PHP: ini and inheritance", `-- Procfile --
web: php app.php
-- app.php --
<?php
abstract class Base {
    protected array $ini;
    public function __construct(string $file) { $this->ini = parse_ini_file($file, true); }
    abstract protected function section(): string;
    public function __get($name) { return $this->ini[$this->section()][$name] ?? null; }
    public function address(): string { return "tcp://{$this->host}:" . ($this->port()); }
    protected function port() { return getenv('PORT') ?: $this->port; }
}
class Web extends Base {
    protected function section(): string { return 'web'; }
    protected function port() { return (int) parent::port(); }
}
$s = stream_socket_server((new Web('app.ini'))->address());
stream_socket_accept($s, -1);
-- app.ini --
[web]
host = 0.0.0.0
port = 9213
[admin]
port = 9214
`, ` => any 9213
PORT=5123 => any 5123`},
	{"PHP: switch and while", `-- Procfile --
web: php app.php
-- app.php --
<?php
$port = 9215;
switch (getenv('MODE')) {
    case 'a':
    case 'b':
        $port++;
        break;
    case 'c':
        while ($port % 10 != 0) { $port++; }
        break;
    default:
        $port = max(9300, $port);
}
$n = 0;
do { $n += 2; } while ($n < 5);
$s = stream_socket_server('tcp://127.0.0.1:' . ($port + $n));
stream_socket_accept($s, -1);
`, ` => loopback 9306
MODE=b => loopback 9222
MODE=c => loopback 9226`},
	{"PHP: getopt", `-- Procfile --
web: php app.php -p 9216 --bind=127.0.0.1
-- app.php --
<?php
$o = getopt('p:', ['bind:', 'verbose']);
$port = getenv('PORT') ?: ($o['p'] ?? 80);
$bind = $o['bind'] ?? '0.0.0.0';
$s = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
socket_set_option($s, SOL_SOCKET, SO_REUSEADDR, 1);
socket_bind($s, $bind, (int) $port) or die('no');
socket_listen($s);
while (socket_accept($s));
`, ` => loopback 9216
PORT=5123 => loopback 5123`},
	{"Java: a default method that asks an abstract one, which a method reference gives", `-- Procfile --
web: java src/Dome.java
-- src/Dome.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

class Dome {
    interface Source {
        String get(String name);
        default int port() { String v = get("PORT"); return v == null || v.isBlank() ? 1 << 13 : Integer.parseInt(v.strip()); }
    }
    public static void main(String[] args) throws Exception {
        Source env = System::getenv;
        HttpServer s = HttpServer.create(new InetSocketAddress("0.0.0.0", env.port()), 0);
        s.start();
    }
}
`, ` => any 8192
PORT=5123 => any 5123`},
	{"Ruby: an attempt that is made again without the variable", `-- Procfile --
web: ruby dome.rb
-- dome.rb --
require "webrick"
attempts = 0
begin
  attempts += 1
  port = Integer(ENV.fetch("PORT", "9801"))
rescue ArgumentError
  retry if attempts < 2 && ENV.delete("PORT")
  abort "PORT is no number"
end
found = catch(:found) do
  [ENV["BIND"], "0.0.0.0"].each { |b| throw :found, b if b }
end
s = WEBrick::HTTPServer.new(Port: port, BindAddress: found)
s.start
`, ` => any 9801
PORT=5123 BIND=127.0.0.1 => loopback 5123
PORT=x => any 9801`},
	{"Python: fields that ask the environment, and sets", `-- Procfile --
web: python serve.py
-- serve.py --
import os
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer


class Setting:
    def __init__(self, default, cast=str):
        self.default, self.cast = default, cast

    def __set_name__(self, owner, name):
        self.name = name.upper()

    def __get__(self, obj, owner=None):
        value = os.environ.get(self.name)
        return self.cast(value) if value else self.default


class Dome:
    bind = Setting("0.0.0.0")
    port = Setting(9802, int)


more = {"PORT"} - set(os.environ)
dome = Dome()
ThreadingHTTPServer((dome.bind, dome.port if more != {"PORT"} else 9803), SimpleHTTPRequestHandler).serve_forever()
`, ` => any 9803
PORT=5123 => any 5123
PORT=5123 BIND=127.0.0.1 => loopback 5123`},
}

func TestWalked(t *testing.T) {
	t.Parallel()
	for _, c := range walked {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
