package check_test

import "testing"

// seenFirst are ordinary servers as a developer would write them, each in its own way: what each did in the
// environments beside it was read from the kernel.
var seenFirst = []struct{ name, tree, want string }{
	{"json config file named by a flag", `-- Procfile --
web: ./srv -config conf/live.json
-- go.mod --
module example.org/j

go 1.26
-- conf/live.json --
{"listen": {"address": "0.0.0.0", "port": 8215}, "log": "warn"}
-- main.go --
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"log/slog"
	"net/http"
	"os"
)

type Config struct {
	Listen struct {
		Address string ` + "`" + `json:"address"` + "`" + `
		Port    int    ` + "`" + `json:"port"` + "`" + `
	} ` + "`" + `json:"listen"` + "`" + `
	Log slog.Level ` + "`" + `json:"log"` + "`" + `
}

func load(path string) (*Config, error) {
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, fmt.Errorf("reading %s: %w", path, err)
	}
	c := new(Config)
	if err := json.Unmarshal(data, c); err != nil {
		return nil, err
	}
	return c, nil
}

func main() {
	path := flag.String("config", "conf/local.json", "settings")
	flag.Parse()
	c, err := load(*path)
	if err != nil {
		slog.Error("settings", "err", err)
		os.Exit(1)
	}
	if p := os.Getenv("PORT"); p != "" {
		fmt.Sscanf(p, "%d", &c.Listen.Port)
	}
	if err := http.ListenAndServe(fmt.Sprintf("%s:%d", c.Listen.Address, c.Listen.Port), nil); err != nil {
		slog.Error("listen", "err", err)
		os.Exit(1)
	}
}
`, ` => any 8215
PORT=5312 => any 5312`},
	{"java HttpServer with a record of settings", `-- Procfile --
web: java -cp out org.obs.Main
-- src/org/obs/Main.java --
package org.obs;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;

public final class Main {
    private Main() {}

    public static void main(String[] args) throws IOException {
        Settings settings = Settings.fromEnvironment();
        HttpServer server = HttpServer.create(new InetSocketAddress(settings.host(), settings.port()), 0);
        server.createContext("/health", exchange -> {
            byte[] body = "ok".getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, body.length);
            try (var out = exchange.getResponseBody()) {
                out.write(body);
            }
        });
        server.setExecutor(null);
        server.start();
    }
}
-- src/org/obs/Settings.java --
package org.obs;

import java.util.Map;
import java.util.Optional;

public record Settings(String host, int port) {
    public Settings {
        if (port < 0 || port > 65535) {
            throw new IllegalArgumentException("port out of range: " + port);
        }
    }

    static Settings fromEnvironment() {
        Map<String, String> env = System.getenv();
        String host = env.getOrDefault("HOST", "0.0.0.0");
        int port = Optional.ofNullable(env.get("PORT"))
                .filter(value -> !value.isBlank())
                .map(Integer::parseInt)
                .orElse(8221);
        return new Settings(host, port);
    }
}
`, ` => any 8221
PORT=5316 => any 5316
PORT=north => exits`},
	{"java properties from the class path with placeholders", `-- Procfile --
web: java -Dserver.port=8222 -cp out App
-- src/app.properties --
server.host=${SERVER_HOST:0.0.0.0}
server.port=8223
-- src/App.java --
import com.sun.net.httpserver.HttpServer;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

public class App {
    private static final Pattern PLACEHOLDER = Pattern.compile("\\$\\{([A-Z_]+):([^}]*)}");

    static String resolve(String raw) {
        Matcher m = PLACEHOLDER.matcher(raw);
        if (m.matches()) {
            String value = System.getenv(m.group(1));
            return value != null ? value : m.group(2);
        }
        return raw;
    }

    public static void main(String[] args) throws Exception {
        Properties p = new Properties();
        try (InputStream in = App.class.getResourceAsStream("/app.properties")) {
            p.load(in);
        }
        p.putAll(System.getProperties());
        int port = Integer.parseInt(resolve(p.getProperty("server.port", "8224")));
        HttpServer.create(new InetSocketAddress(resolve(p.getProperty("server.host")), port), 0).start();
    }
}
`, ` => any 8222
SERVER_HOST=127.0.0.1 => loopback 8222`},
	{"java server socket with args", `-- Procfile --
web: java -cp out Main --port=8225 --bind=0.0.0.0
-- Main.java --
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.HashMap;
import java.util.Map;

public class Main {
    public static void main(String[] args) throws Exception {
        Map<String, String> options = new HashMap<>();
        for (String arg : args) {
            if (!arg.startsWith("--")) {
                System.err.println("unknown argument " + arg);
                System.exit(2);
            }
            String[] pair = arg.substring(2).split("=", 2);
            options.put(pair[0], pair.length > 1 ? pair[1] : "true");
        }
        String env = System.getenv("PORT");
        int port = env == null ? Integer.parseInt(options.getOrDefault("port", "8226")) : Integer.parseInt(env);
        try (ServerSocket socket = new ServerSocket(port, 50, InetAddress.getByName(options.get("bind")))) {
            while (true) {
                try (var client = socket.accept()) {
                    client.getOutputStream().write("hi\n".getBytes());
                }
            }
        }
    }
}
`, ` => any 8225
PORT=5318 => any 5318`},
	{"java with enum profiles and switch", `-- Procfile --
web: java -cp out Main
-- Main.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Locale;
import java.util.concurrent.Executors;

public class Main {
    enum Profile {
        LOCAL("127.0.0.1", 8227), LIVE("0.0.0.0", 8228);
        final String host;
        final int port;
        Profile(String host, int port) {
            this.host = host;
            this.port = port;
        }
    }

    static Profile profile() {
        String name = System.getenv().getOrDefault("PROFILE", "local").toUpperCase(Locale.ROOT);
        return switch (name) {
            case "LOCAL", "DEV" -> Profile.LOCAL;
            default -> Profile.valueOf(name);
        };
    }

    public static void main(String... args) throws Exception {
        var p = profile();
        var server = HttpServer.create();
        server.bind(new InetSocketAddress(p.host, p.port), 10);
        server.setExecutor(Executors.newFixedThreadPool(4));
        server.start();
    }
}
`, ` => loopback 8227
PROFILE=live => any 8228
PROFILE=none => exits`},
	{"java nio server channel", `-- Procfile --
web: java -cp out Main
-- Main.java --
import java.net.InetSocketAddress;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.ServerSocketChannel;

public class Main {
    private final int port;
    Main(int port) { this.port = port; }
    void serve() throws Exception {
        Selector selector = Selector.open();
        ServerSocketChannel channel = ServerSocketChannel.open();
        channel.configureBlocking(false);
        channel.bind(new InetSocketAddress(port));
        channel.register(selector, SelectionKey.OP_ACCEPT);
        while (selector.select() >= 0) {
            selector.selectedKeys().clear();
        }
    }
    public static void main(String[] args) throws Exception {
        String raw = System.getenv("PORT");
        new Main(raw != null && raw.matches("\\d+") ? Integer.parseInt(raw) : 8229).serve();
    }
}
`, ` => any 8229
PORT=5320 => any 5320`},
	{"java with JAVA_OPTS in a shell script", `-- Procfile --
web: ./run.sh
-- run.sh --
#!/bin/sh
exec java ${JAVA_OPTS:--Xmx64m} -cp out Main "${PORT:-}"
-- Main.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Main {
    public static void main(String[] args) throws Exception {
        int port = Integer.getInteger("http.port", 8231);
        if (args.length > 0 && !args[0].isEmpty()) {
            port = Integer.parseInt(args[0]);
        }
        HttpServer.create(new InetSocketAddress(port), 0).start();
    }
}
`, ` => any 8231
JAVA_OPTS=-Dhttp.port=5322 => any 5322
PORT=5323 => any 5323`},
	{"webrick with yaml settings", `-- Procfile --
web: ruby bin/server
-- bin/server --
#!/usr/bin/env ruby
# frozen_string_literal: true
$LOAD_PATH.unshift File.expand_path('../lib', __dir__)
require 'gate/settings'
require 'webrick'
settings = Gate::Settings.load
server = WEBrick::HTTPServer.new(Port: settings.port, BindAddress: settings.host, AccessLog: [], Logger: WEBrick::Log.new(File::NULL))
server.mount_proc('/') { |_req, res| res.body = 'gate' }
trap('INT') { server.shutdown }
server.start
-- lib/gate/settings.rb --
require 'yaml'
module Gate
  Settings = Struct.new(:host, :port, keyword_init: true) do
    def self.load(env = ENV)
      all = YAML.load_file(File.join(__dir__, '../../config/settings.yml'))
      stage = all.fetch(env['STAGE'] || 'local')
      new(host: stage['host'], port: Integer(env.fetch('PORT', stage['port'])))
    end
  end
end
-- config/settings.yml --
local:
  host: 127.0.0.1
  port: 8303
live:
  host: 0.0.0.0
  port: 8304
`, ` => loopback 8303
STAGE=live => any 8304
STAGE=live PORT=5404 => any 5404`},
	{"puma direct handler", `-- Procfile --
web: ruby main.rb
-- main.rb --
require 'puma'
require 'puma/server'
require 'uri'
app = proc { [200, {}, ['x']] }
uri = URI.parse(ENV.fetch('LISTEN', 'tcp://127.0.0.1:8310'))
server = Puma::Server.new(app)
server.add_tcp_listener(uri.host, uri.port)
server.run.join
-- Gemfile --
gem 'puma'
`, ` => loopback 8310
LISTEN=tcp://0.0.0.0:5409 => any 5409`},
	{"shell picks by stage", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/sh
set -eu
: "${STAGE:=local}"
case "$STAGE" in
  live) HOST=0.0.0.0 ;;
  local) HOST=127.0.0.1; PORT=${PORT:-8318} ;;
  *) echo "unknown stage $STAGE" >&2; exit 3 ;;
esac
export HOST PORT
exec python3 -m http.server "$PORT" --bind "$HOST"
`, ` => loopback 8318
STAGE=live PORT=5416 => any 5416
STAGE=odd => exits`},
	{"shell reads dotenv with set -a", `-- Procfile --
web: bash start.sh
-- app.env --
PORT=8319
HOST=0.0.0.0
-- start.sh --
#!/bin/bash
dir=$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)
set -a
[ -f "$dir/app.env" ] && . "$dir/app.env"
set +a
args=(--bind "$HOST")
[[ -n ${VERBOSE:-} ]] && args+=(--cgi)
exec python3 -m http.server "${PORT}" "${args[@]}"
`, ` => any 8319
PORT=5417 => any 8319`},
	{"puma with workers and a unix socket by stage", `-- Procfile --
web: puma
-- config.ru --
run ->(e) { [200, {}, ['x']] }
-- config/puma.rb --
if ENV['RACK_ENV'] == 'production'
  workers 0
  bind "tcp://0.0.0.0:#{ENV['PORT'] || 8321}"
else
  bind 'tcp://127.0.0.1:8322'
end
`, ` => loopback 8322
RACK_ENV=production => any 8321
RACK_ENV=production PORT=5419 => any 5419`},
	{"socket.io attached to a port", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"socket.io":"^4"}}
-- app.js --
const io = require('socket.io')({ serveClient: false });
io.attach(process.env.PORT || 7201);
`, ` => any 7201`},
	{"socket.io attached to a server", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"socket.io":"^4"}}
-- app.js --
const server = require('http').createServer();
const io = require('socket.io')();
io.attach(server);
server.listen(process.env.PORT || 7202);
`, ` => any 7202`},
	{"socket.io called with a server", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"socket.io":"^4"}}
-- app.js --
const server = require('http').createServer();
require('socket.io')(server);
server.listen(7203);
`, ` => any 7203`},
	{"prototypes on an emitter by Object.create", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- app.js --
const EventEmitter = require('events');
function Dome(port) {
  EventEmitter.call(this);
  this.port = port;
}
Dome.prototype = Object.create(EventEmitter.prototype);
Dome.prototype.constructor = Dome;
Dome.prototype.open = function () { this.emit('open', this.port); };
const dome = new Dome(Number(process.env.PORT || 7204));
dome.on('open', (port) => require('http').createServer().listen(port));
dome.open();
`, ` => any 7204`},
	{"prototypes by setPrototypeOf", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a"}
-- app.js --
const { EventEmitter } = require('node:events');
const inherits = require('node:util').inherits;
function Base() { EventEmitter.call(this); }
inherits(Base, EventEmitter);
Base.prototype.name = function () { return this.host; };
function Server(host) { Base.call(this); this.host = host; }
Object.setPrototypeOf(Server.prototype, Base.prototype);
const s = new Server('127.0.0.1');
s.once('ready', function () { require('net').createServer().listen(7205, this.name()); });
s.emit('ready');
`, ` => loopback 7205`},
	{"ruby settings by ostruct and json", `-- Procfile --
web: ruby server.rb
-- config.json --
{"defaults":{"host":"127.0.0.1","port":7301},"live":{"host":"0.0.0.0","port":7302}}
-- server.rb --
require 'json'
require 'ostruct'
require 'webrick'
raw = JSON.parse(File.read(File.join(__dir__, 'config.json')), symbolize_names: true)
stage = (ENV['DOME_ENV'] || 'defaults').to_sym
config = OpenStruct.new(raw[:defaults].merge(raw[stage] || {}))
server = WEBrick::HTTPServer.new(Port: config.port, BindAddress: config.host, Logger: WEBrick::Log.new('/dev/null'), AccessLog: [])
server.start
`, ` => loopback 7301
DOME_ENV=live => any 7302`},
	{"ruby Data class and pattern matching", `-- Procfile --
web: ruby server.rb
-- server.rb --
require 'socket'
Address = Struct.new(:host, :port) do
  def self.parse(text)
    case text.split(':')
    in [host, port] then new(host, Integer(port))
    in [port] then new('127.0.0.1', Integer(port))
    end
  end
end
address = Address.parse(ENV.fetch('LISTEN', '7303'))
server = TCPServer.new(address.host, address.port)
loop { server.accept.close }
`, ` => loopback 7303
LISTEN=0.0.0.0:6102 => any 6102
LISTEN=6103 => loopback 6103`},
	{"ruby sinatra with config file of yaml erb", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source 'https://rubygems.org'
gem 'sinatra'
gem 'puma'
-- config/app.yml --
production: &prod
  port: <%= ENV['PORT'] || 7304 %>
  bind: 0.0.0.0
development:
  <<: *prod
  bind: 127.0.0.1
-- app.rb --
require 'sinatra/base'
require 'yaml'
require 'erb'
class App < Sinatra::Base
  SETTINGS = YAML.safe_load(ERB.new(File.read(File.expand_path('config/app.yml', __dir__))).result, aliases: true)[ENV.fetch('RACK_ENV', 'development')]
  set :port, SETTINGS['port']
  set :bind, SETTINGS['bind']
  get('/') { 'ok' }
  run! if app_file == $0
end
`, ` => loopback 7304
PORT=6104 => loopback 6104`},
	{"ruby mixin and class variables", `-- Procfile --
web: ruby server.rb
-- server.rb --
require 'socket'
module Configurable
  def self.included(base)
    base.extend(ClassMethods)
  end

  module ClassMethods
    def option(name, env:, default:)
      options[name] = { env:, default: }
      define_method(name) do
        value = ENV[env]
        value.nil? || value.empty? ? default : value
      end
    end

    def options = (@options ||= {})
  end
end

class Server
  include Configurable
  option :port, env: 'WEB_PORT', default: '7305'
  option :host, env: 'WEB_HOST', default: '0.0.0.0'

  def start
    Socket.tcp_server_sockets(host, port.to_i) do |sockets|
      Socket.accept_loop(sockets) { |c, _| c.close }
    end
  end
end
Server.new.start
`, ` => any 7305
WEB_PORT=6105 => any 6105`},
	{"ruby puma from rack builder file in config", `-- Procfile --
web: puma config/web.ru -p ${PORT:-7306} -e production
-- config/web.ru --
require 'rack'
app = Rack::Builder.app do
  run ->(env) { [200, {}, ['x']] }
end
run app
-- Gemfile --
gem 'puma'
`, ` => any 7306
PORT=6106 => any 6106`},
	{"ruby rack handler with env options", `-- Procfile --
web: ruby -r./lib/boot.rb -e 'Boot.run'
-- lib/boot.rb --
require 'rack'
require 'rack/handler/webrick'
module Boot
  HOSTS = { 'production' => '0.0.0.0' }.tap { |h| h.default = '127.0.0.1' }.freeze
  def self.run
    Rack::Handler::WEBrick.run(->(e) { [200, {}, ['x']] }, Port: (ENV['PORT'] || '7307').to_i, Host: HOSTS[ENV['RACK_ENV']], AccessLog: [])
  end
end
`, ` => loopback 7307
PORT=6107 => loopback 6107`},
	{"ruby thor like dispatch by send", `-- Procfile --
web: ruby bin/sky serve -p 7308
-- bin/sky --
#!/usr/bin/env ruby
require_relative '../lib/sky'
Sky::Main.new(ARGV).call
-- lib/sky.rb --
require 'optparse'
require 'socket'
module Sky
  class Main
    def initialize(argv)
      @argv = argv.dup
    end

    def call
      command = @argv.shift or abort('usage: sky COMMAND')
      abort("sky: no command #{command}") unless respond_to?("cmd_#{command}", true)
      send("cmd_#{command}")
    end

    private

    def cmd_serve
      options = { port: 7309, host: ENV['SKY_HOST'] || 'localhost' }
      OptionParser.new do |opts|
        opts.on('-p PORT', '--port PORT', Integer) { |p| options[:port] = p }
      end.parse!(@argv)
      server = TCPServer.new(options[:host], options[:port])
      loop { server.accept.close }
    end
  end
end
`, ` => loopback 7308
SKY_HOST=0.0.0.0 => any 7308`},
	{"ruby begin rescue retry", `-- Procfile --
web: ruby server.rb
-- server.rb --
require 'socket'
attempts = 0
begin
  port = Integer(ENV['PORT'] || '7310')
rescue ArgumentError => e
  warn e.message
  attempts += 1
  ENV.delete('PORT')
  retry if attempts < 2
end
server = TCPServer.new('0.0.0.0', port)
loop { server.accept.close }
`, ` => any 7310
PORT=x => any 7310`},
	{"php front of a small framework of its own", `-- Procfile --
web: php bin/console serve --host=0.0.0.0
-- bin/console --
#!/usr/bin/env php
<?php
require __DIR__ . '/../src/bootstrap.php';
exit((new App\Console($argv))->run());
-- src/bootstrap.php --
<?php
foreach (['Console', 'Commands/Serve', 'Config'] as $file) {
    require_once __DIR__ . "/$file.php";
}
-- src/Config.php --
<?php
namespace App;

class Config implements \ArrayAccess
{
    private array $values;
    public function __construct(array $values) { $this->values = $values; }
    public function offsetExists(mixed $k): bool { return isset($this->values[$k]); }
    public function offsetGet(mixed $k): mixed { return $this->values[$k] ?? null; }
    public function offsetSet(mixed $k, mixed $v): void { $this->values[$k] = $v; }
    public function offsetUnset(mixed $k): void { unset($this->values[$k]); }
}
-- src/Console.php --
<?php
namespace App;

final class Console
{
    /** @var array<string, class-string> */
    private const COMMANDS = ['serve' => Commands\Serve::class];

    public function __construct(private array $argv) {}

    public function run(): int
    {
        $name = $this->argv[1] ?? 'list';
        $class = self::COMMANDS[$name] ?? null;
        if ($class === null) {
            fwrite(STDERR, "no command $name\n");
            return 1;
        }
        $options = [];
        foreach (array_slice($this->argv, 2) as $arg) {
            if (preg_match('/^--([a-z-]+)(?:=(.*))?$/', $arg, $m)) {
                $options[$m[1]] = $m[2] ?? true;
            }
        }
        return (new $class(new Config(['port' => getenv('APP_PORT') ?: '7311', 'host' => '127.0.0.1', ...$options])))();
    }
}
-- src/Commands/Serve.php --
<?php
namespace App\Commands;

use App\Config;

class Serve
{
    public function __construct(private Config $config) {}

    public function __invoke(): int
    {
        $server = stream_socket_server("tcp://{$this->config['host']}:{$this->config['port']}", $code, $message);
        if (!$server) {
            return 1;
        }
        while (true) {
            if ($c = @stream_socket_accept($server, 3600)) {
                fclose($c);
            }
        }
    }
}
`, ` => any 7311
APP_PORT=6111 => any 6111`},
	{"php env files by hand", `-- Procfile --
web: php server.php
-- .env --
# listening
PORT=7312
HOST="0.0.0.0"
-- server.php --
<?php
function load_env(string $file): void
{
    if (!is_readable($file)) {
        return;
    }
    foreach (file($file, FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) as $line) {
        $line = trim($line);
        if ($line === '' || $line[0] === '#') {
            continue;
        }
        [$key, $value] = array_map('trim', explode('=', $line, 2));
        $value = trim($value, "\"'");
        if (getenv($key) === false) {
            putenv("$key=$value");
            $_ENV[$key] = $value;
        }
    }
}
load_env(__DIR__ . '/.env');
$s = stream_socket_server('tcp://' . getenv('HOST') . ':' . getenv('PORT'));
while (true) stream_socket_accept($s, -1);
`, ` => any 7312
PORT=6112 => any 6112`},
	{"php generators and static counters", `-- Procfile --
web: php server.php
-- server.php --
<?php
function candidates(string $list): Generator
{
    foreach (explode(',', $list) as $p) {
        if (ctype_digit($p)) {
            yield (int) $p;
        }
    }
    yield 7313;
}
$port = null;
foreach (candidates(getenv('PORTS') ?: '') as $p) {
    $port = $p;
    break;
}
$s = socket_create(AF_INET, SOCK_STREAM, SOL_TCP) ?: exit(1);
if (!socket_bind($s, '0.0.0.0', $port) || !socket_listen($s, 16)) {
    exit(2);
}
while (true) socket_accept($s);
`, ` => any 7313
PORTS=x,6113,6114 => any 6113`},
	{"php json settings with objects and null safe", `-- Procfile --
web: php server.php live
-- settings.json --
{"live": {"listen": {"host": "0.0.0.0", "port": 7315}}, "dev": {}}
-- server.php --
<?php
$all = json_decode(file_get_contents(__DIR__ . '/settings.json'));
$stage = $argv[1] ?? 'dev';
$listen = $all?->{$stage}?->listen ?? null;
$host = $listen?->host ?? '127.0.0.1';
$port = getenv('PORT') !== false ? (int) getenv('PORT') : ($listen?->port ?? 7316);
$server = stream_socket_server("tcp://$host:$port");
while (true) stream_socket_accept($server, -1);
`, ` => any 7315
PORT=6115 => any 6115`},
	{"shell functions with getopts", `-- Procfile --
web: ./run.sh -h 0.0.0.0 -p 7317
-- run.sh --
#!/bin/bash
set -euo pipefail
usage() { echo "usage: $0 [-h host] [-p port]" >&2; exit 64; }
host=127.0.0.1
port=8000
while getopts 'h:p:' flag; do
  case $flag in
    h) host=$OPTARG ;;
    p) port=$OPTARG ;;
    *) usage ;;
  esac
done
shift $((OPTIND - 1))
exec python3 -m http.server --bind "$host" "${PORT:-$port}"
`, ` => any 7317
PORT=6117 => any 6117`},
	{"shell trap and wait with a child", `-- Procfile --
web: ./run.sh
-- run.sh --
#!/bin/sh
term() { kill -TERM "$child" 2>/dev/null; }
trap term TERM INT
python3 -m http.server "${PORT:-7318}" &
child=$!
wait "$child"
`, ` => any 7318
PORT=6118 => any 6118`},
	{"shell chooses the port by arithmetic", `-- Procfile --
web: bash run.sh 2
-- run.sh --
n=${1:-0}
port=$(( ${BASE:-7319} + n * 10 ))
exec node -e "require('http').createServer().listen($port, '127.0.0.1')"
`, ` => loopback 7339
BASE=6119 => loopback 6139`},
	{"shell writes nothing, reads a file of the tree", `-- Procfile --
web: sh run.sh
-- port.txt --
7320
-- run.sh --
read -r PORT < port.txt
export PORT
exec node app.js
-- app.js --
require('http').createServer().listen(process.env.PORT);
`, ` => any 7320`},
	{"shell with a here document to node", `-- Procfile --
web: sh run.sh
-- run.sh --
PORT=${PORT:-7321} node - <<'JS'
require('http').createServer().listen(process.env.PORT, '0.0.0.0');
JS
`, ` => any 7321
PORT=6121 => any 6121`},
	{"java with interfaces, streams and a map of environments", `-- Procfile --
web: java -cp out dome.App
-- src/dome/App.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class App {
    public static void main(String[] args) throws Exception {
        Config config = new ConfigLoader(System.getenv()).load();
        HttpServer server = HttpServer.create(config.address(), 0);
        server.createContext("/", e -> { e.sendResponseHeaders(200, 0); e.close(); });
        server.start();
        System.out.printf("listening on %s%n", config.address());
    }
}
-- src/dome/Config.java --
package dome;

import java.net.InetSocketAddress;

public interface Config {
    String host();
    int port();
    default InetSocketAddress address() { return new InetSocketAddress(host(), port()); }
}
-- src/dome/ConfigLoader.java --
package dome;

import java.util.*;
import java.util.stream.*;

class ConfigLoader {
    private static final Map<String, Config> PRESETS = Stream.of(
            Map.entry("dev", new Fixed("127.0.0.1", 7322)),
            Map.entry("live", new Fixed("0.0.0.0", 7323)))
        .collect(Collectors.toUnmodifiableMap(Map.Entry::getKey, Map.Entry::getValue));

    private record Fixed(String host, int port) implements Config {}

    private final Map<String, String> env;

    ConfigLoader(Map<String, String> env) { this.env = env; }

    Config load() {
        Config preset = Optional.ofNullable(PRESETS.get(env.getOrDefault("APP_ENV", "dev"))).orElseThrow();
        return env.containsKey("PORT") ? new Fixed(preset.host(), Integer.parseInt(env.get("PORT"))) : preset;
    }
}
`, ` => loopback 7322
APP_ENV=live => any 7323
APP_ENV=live PORT=6122 => any 6122`},
	{"java builder pattern", `-- Procfile --
web: java -cp out Server --port 7324 --public
-- Server.java --
import java.net.*;
import java.util.*;

public class Server {
    private final String host;
    private final int port;

    private Server(Builder b) { this.host = b.host; this.port = b.port; }

    static Builder builder() { return new Builder(); }

    static final class Builder {
        private String host = "localhost";
        private int port = 8080;
        Builder host(String h) { this.host = h; return this; }
        Builder port(int p) {
            if (p < 1) throw new IllegalArgumentException("port " + p);
            this.port = p;
            return this;
        }
        Server build() { return new Server(this); }
    }

    void run() throws Exception {
        try (ServerSocket s = new ServerSocket(port, 10, InetAddress.getByName(host))) {
            while (!Thread.currentThread().isInterrupted()) s.accept().close();
        }
    }

    public static void main(String[] argv) throws Exception {
        Builder b = builder();
        Iterator<String> args = Arrays.asList(argv).iterator();
        while (args.hasNext()) {
            String a = args.next();
            switch (a) {
                case "--port" -> b.port(Integer.parseInt(args.next()));
                case "--public" -> b.host("0.0.0.0");
                default -> throw new IllegalArgumentException(a);
            }
        }
        String p = System.getenv("SERVER_PORT");
        if (p != null && !p.isEmpty()) b.port(Integer.valueOf(p));
        b.build().run();
    }
}
`, ` => any 7324
SERVER_PORT=6124 => any 6124`},
	{"java reads a properties file by path", `-- Procfile --
web: java -Dconfig=conf/live.properties -cp out Main
-- conf/live.properties --
# live
http.port = 7325
http.host : 0.0.0.0
-- Main.java --
import com.sun.net.httpserver.HttpServer;
import java.io.*;
import java.net.InetSocketAddress;
import java.nio.file.*;
import java.util.*;

public class Main {
    static String lookup(Properties p, String key) {
        String env = System.getenv(key.toUpperCase().replace('.', '_'));
        return env != null ? env : p.getProperty(key);
    }
    public static void main(String[] a) throws IOException {
        Properties p = new Properties();
        Path path = Paths.get(System.getProperty("config", "conf/local.properties"));
        try (Reader r = Files.newBufferedReader(path)) {
            p.load(r);
        } catch (NoSuchFileException e) {
            System.err.println("no settings at " + path);
            System.exit(3);
        }
        HttpServer.create(new InetSocketAddress(lookup(p, "http.host"), Integer.parseInt(lookup(p, "http.port"))), 0).start();
    }
}
`, ` => any 7325
HTTP_PORT=6125 => any 6125`},
	{"java exception when the variable is missing", `-- Procfile --
web: java -cp out Main
-- Main.java --
import java.net.*;
import java.util.*;

public class Main {
    static class MissingVariable extends RuntimeException {
        MissingVariable(String name) { super(name + " must be set"); }
    }
    static String require(String name) {
        return Optional.ofNullable(System.getenv(name)).orElseThrow(() -> new MissingVariable(name));
    }
    public static void main(String[] a) throws Exception {
        int port = Integer.parseInt(require("PORT"));
        new ServerSocket(port).accept();
    }
}
`, ` => exits
PORT=6126 => any 6126`},
	{"go interfaces and a registry of commands", `-- Procfile --
web: ./srv serve
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
)

type command interface{ run(args []string) error }

type commandFunc func(args []string) error

func (f commandFunc) run(args []string) error { return f(args) }

var commands = map[string]command{}

func register(name string, c command) { commands[name] = c }

func init() {
	register("serve", commandFunc(serve))
	register("version", commandFunc(func([]string) error { fmt.Println("1"); return nil }))
}

var errUsage = errors.New("usage: srv COMMAND")

func main() {
	if err := dispatch(os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		if errors.Is(err, errUsage) {
			os.Exit(64)
		}
		os.Exit(1)
	}
}

func dispatch(args []string) error {
	if len(args) == 0 {
		return errUsage
	}
	c, ok := commands[args[0]]
	if !ok {
		return fmt.Errorf("%w: no %q", errUsage, args[0])
	}
	return c.run(args[1:])
}

func serve([]string) error {
	host := ""
	if os.Getenv("MODE") == "debug" {
		host = "localhost"
	}
	port := os.Getenv("PORT")
	if port == "" {
		port = "7327"
	}
	return http.ListenAndServe(net.JoinHostPort(host, port), http.NotFoundHandler())
}
`, ` => any 7327
PORT=6127 => any 6127
MODE=debug => loopback 7327`},
	{"go struct tags read by reflection", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
	"reflect"
	"strconv"
)

type Config struct {
	Host string ` + "`" + `env:"APP_HOST" default:"0.0.0.0"` + "`" + `
	Port int    ` + "`" + `env:"APP_PORT" default:"7328"` + "`" + `
}

func fill(v any) error {
	rv := reflect.ValueOf(v).Elem()
	rt := rv.Type()
	for i := 0; i < rt.NumField(); i++ {
		f := rt.Field(i)
		raw, ok := os.LookupEnv(f.Tag.Get("env"))
		if !ok {
			raw = f.Tag.Get("default")
		}
		switch f.Type.Kind() {
		case reflect.String:
			rv.Field(i).SetString(raw)
		case reflect.Int:
			n, err := strconv.ParseInt(raw, 10, 64)
			if err != nil {
				return fmt.Errorf("%s: %w", f.Name, err)
			}
			rv.Field(i).SetInt(n)
		}
	}
	return nil
}

func main() {
	var c Config
	if err := fill(&c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprint(c.Host, ":", c.Port), nil))
}
`, ` => any 7328
APP_PORT=6128 APP_HOST=127.0.0.1 => loopback 6128
APP_PORT=many => exits`},
	{"go generics and options map", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"strconv"
)

func Env[T any](name string, fallback T, parse func(string) (T, error)) T {
	raw, ok := os.LookupEnv(name)
	if !ok {
		return fallback
	}
	v, err := parse(raw)
	if err != nil {
		log.Fatalf("%s: %v", name, err)
	}
	return v
}

type Pair[K comparable, V any] struct {
	Key K
	Val V
}

func main() {
	p := Pair[string, int]{"port", Env("PORT", 7329, strconv.Atoi)}
	s := &http.Server{Addr: ":" + strconv.Itoa(p.Val)}
	log.Fatal(s.ListenAndServe())
}
`, ` => any 7329
PORT=6129 => any 6129`},
	{"go embedded json with defaults and environment by stage", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- stages/dev.json --
{"addr": "127.0.0.1:7330"}
-- stages/live.json --
{"addr": ":7331"}
-- main.go --
package main

import (
	"embed"
	"encoding/json"
	"log"
	"net/http"
	"os"
	"path"
)

//go:embed stages/*.json
var stages embed.FS

func main() {
	stage := os.Getenv("STAGE")
	if stage == "" {
		stage = "dev"
	}
	f, err := stages.Open(path.Join("stages", stage+".json"))
	if err != nil {
		log.Fatal(err)
	}
	defer f.Close()
	var c struct{ Addr string }
	if err := json.NewDecoder(f).Decode(&c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(c.Addr, nil))
}
`, ` => loopback 7330
STAGE=live => any 7331
STAGE=none => exits`},
	{"go context and channel of errors with two servers", `-- Procfile --
web: ./srv
-- go.mod --
module example.org/a

go 1.26
-- main.go --
package main

import (
	"context"
	"log"
	"net/http"
	"os"
	"os/signal"
	"time"
)

func env(k, d string) string {
	if v := os.Getenv(k); v != "" {
		return v
	}
	return d
}

func main() {
	ctx, cancel := signal.NotifyContext(context.Background(), os.Interrupt)
	defer cancel()
	servers := []*http.Server{{Addr: ":" + env("HTTP_PORT", "7332")}}
	if p := env("DEBUG_PORT", "7333"); p != "0" {
		servers = append(servers, &http.Server{Addr: "127.0.0.1:" + p})
	}
	errs := make(chan error, len(servers))
	for _, s := range servers {
		s := s
		go func() { errs <- s.ListenAndServe() }()
	}
	select {
	case err := <-errs:
		log.Fatal(err)
	case <-ctx.Done():
		stop, c := context.WithTimeout(context.Background(), time.Second)
		defer c()
		for _, s := range servers {
			_ = s.Shutdown(stop)
		}
	}
}
`, ` => any 7332 & loopback 7333
HTTP_PORT=6132 DEBUG_PORT=0 => any 6132`},
	{"python namedtuple and chained maps", `-- Procfile --
web: python app.py
-- app.py --
import os
from collections import ChainMap, namedtuple
from http.server import HTTPServer, BaseHTTPRequestHandler

Endpoint = namedtuple("Endpoint", "host port", defaults=("0.0.0.0", 7334))
environment = {k[4:].lower(): v for k, v in os.environ.items() if k.startswith("APP_")}
settings = ChainMap(environment, Endpoint()._asdict())
endpoint = Endpoint(settings["host"], int(settings["port"]))
HTTPServer(endpoint, BaseHTTPRequestHandler).serve_forever()
`, ` => any 7334
APP_PORT=6134 => any 6134`},
	{"python metaclass free registry by decorators", `-- Procfile --
web: python app.py web
-- app.py --
import os
import sys
from wsgiref.simple_server import make_server

COMMANDS = {}


def command(name=None, **defaults):
    def wrap(fn):
        COMMANDS[name or fn.__name__] = (fn, defaults)
        return fn
    return wrap


@command("web", host="0.0.0.0", port=7335)
def serve(host, port):
    port = int(os.environ.get("PORT", port))
    with make_server(host, port, lambda e, s: [b""]) as srv:
        srv.serve_forever()


@command()
def version():
    print("1.0")


fn, defaults = COMMANDS[sys.argv[1] if len(sys.argv) > 1 else "version"]
fn(**defaults)
`, ` => any 7335
PORT=6135 => any 6135`},
	{"python property setters and slots", `-- Procfile --
web: python app.py
-- app.py --
import os
import socketserver


class Settings:
    __slots__ = ("_host", "_port")

    def __init__(self, text):
        self._host, self._port = "127.0.0.1", 7336
        if text:
            self.address = text

    @property
    def address(self):
        return self._host, self._port

    @address.setter
    def address(self, text):
        host, _, port = text.partition(":")
        port = int(port)
        if not 0 < port < 2 ** 16:
            raise ValueError(f"port out of range: {port}")
        self._host, self._port = host, port


class Handler(socketserver.StreamRequestHandler):
    def handle(self):
        self.wfile.write(b"x")


settings = Settings(os.getenv("DOME_ADDRESS"))
with socketserver.ThreadingTCPServer(settings.address, Handler) as server:
    server.serve_forever()
`, ` => loopback 7336
DOME_ADDRESS=0.0.0.0:6136 => any 6136
DOME_ADDRESS=0.0.0.0:0 => exits`},
	{"python yaml with env tags", `-- Procfile --
web: python app.py
-- settings.yaml --
http:
  host: 0.0.0.0
  port: ${PORT:7337}
-- app.py --
import os
import re
import yaml
from waitress import serve

PATTERN = re.compile(r"\$\{(\w+)(?::([^}]*))?\}")


def substitute(node):
    if isinstance(node, dict):
        return {k: substitute(v) for k, v in node.items()}
    if isinstance(node, list):
        return [substitute(v) for v in node]
    if isinstance(node, str):
        return PATTERN.sub(lambda m: os.environ.get(m.group(1), m.group(2) or ""), node)
    return node


with open("settings.yaml", encoding="utf-8") as f:
    http = substitute(yaml.safe_load(f))["http"]
serve(lambda e, s: [b""], host=http["host"], port=int(http["port"]))
-- requirements.txt --
waitress
pyyaml
`, ` => any 7337
PORT=6137 => any 6137`},
	{"python async main with argparse subcommands", `-- Procfile --
web: python -m gate serve --bind 0.0.0.0 --port 7338
-- gate/__init__.py --
-- gate/__main__.py --
import argparse
import asyncio
import os


async def handle(r, w):
    w.close()


async def serve(args):
    server = await asyncio.start_server(handle, args.bind, int(os.environ.get("GATE_PORT", args.port)))
    async with server:
        await server.serve_forever()


def parser():
    p = argparse.ArgumentParser(prog="gate")
    sub = p.add_subparsers(dest="command", required=True)
    s = sub.add_parser("serve", help="serve")
    s.add_argument("--bind", default="127.0.0.1")
    s.add_argument("--port", type=int, default=7339)
    s.set_defaults(run=serve)
    v = sub.add_parser("version")
    v.set_defaults(run=None)
    return p


args = parser().parse_args()
if args.run is None:
    print("1")
else:
    asyncio.run(args.run(args))
`, ` => any 7338
GATE_PORT=6138 => any 6138`},
	{"node worker threads with a port each", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
const { Worker, isMainThread, workerData } = require('node:worker_threads');
if (isMainThread) {
  const base = Number(process.env.PORT || 7340);
  for (let i = 0; i < 2; i++) new Worker(__filename, { workerData: { port: base + i } });
} else {
  require('http').createServer((q, s) => s.end()).listen(workerData.port, '127.0.0.1');
}
`, ` => loopback 7340 & loopback 7341
PORT=6140 => loopback 6140 & loopback 6141`},
	{"node a proxy of settings with defaults", `-- Procfile --
web: node main.mjs
-- package.json --
{"name":"a","type":"module"}
-- main.mjs --
import http from 'node:http';
const defaults = { http: { port: 7341, host: '0.0.0.0' } };
const settings = (path) => new Proxy(path.reduce((o, k) => o[k], defaults), {
  get(target, key) {
    if (typeof target[key] === 'object') return settings([...path, key]);
    const name = ['DOME', ...path, key].join('_').toUpperCase();
    return process.env[name] ?? target[key];
  },
});
const { port, host } = settings(['http']);
http.createServer().listen(Number(port), host);
`, ` => any 7341
DOME_HTTP_PORT=6141 => any 6141`},
	{"node async iteration over candidates", `-- Procfile --
web: node main.mjs
-- package.json --
{"name":"a","type":"module"}
-- main.mjs --
import http from 'node:http';
async function* ports() {
  for (const c of (process.env.CANDIDATES ?? '').split(',')) {
    const n = Number(c);
    if (c && Number.isInteger(n)) yield n;
  }
  yield 7342;
}
for await (const port of ports()) {
  http.createServer().listen(port);
  break;
}
`, ` => any 7342
CANDIDATES=no,6142 => any 6142`},
	{"node top level switch with labels and regex", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
const text = process.env.LISTEN || '127.0.0.1:7343';
let target;
const m = /^(?:\[([^\]]+)\]|([^:/]+)):(\d+)$/.exec(text);
switch (true) {
  case text.startsWith('/'):
    target = { path: text };
    break;
  case m !== null:
    target = { host: m[1] ?? m[2], port: Number(m[3]) };
    break;
  default:
    throw new RangeError(` + "`" + `cannot listen on ${text}` + "`" + `);
}
require('net').createServer().listen(target);
`, ` => loopback 7343
LISTEN=0.0.0.0:6143 => any 6143
LISTEN=[::1]:6144 => loopback 6144`},
	{"node inherits and an old style class", `-- Procfile --
web: node main.js
-- package.json --
{"name":"a"}
-- main.js --
var util = require('util');
var events = require('events');
var http = require('http');
function App(options) {
  if (!(this instanceof App)) return new App(options);
  events.EventEmitter.call(this);
  this.options = options || {};
}
util.inherits(App, events.EventEmitter);
App.prototype.start = function () {
  var self = this;
  this.server = http.createServer(function (req, res) { self.emit('request', req); res.end(); });
  this.server.listen(this.options.port, function () { self.emit('up'); });
};
App({ port: parseInt(process.env.PORT || '7345', 10) }).on('up', function () { console.log('up'); }).start();
`, ` => any 7345
PORT=6145 => any 6145`},
	{"lines of a dotenv file with comments", `-- Procfile --
web: sh run.sh
-- .env --
# where it listens
PORT=7401

HOST=127.0.0.1
-- run.sh --
#!/bin/sh
while IFS='=' read -r key text || [ -n "$key" ]; do
  case "$key" in
    ''|\#*) continue ;;
  esac
  export "$key=$text"
done < .env
exec python3 -m http.server --bind "$HOST" "$PORT"
`, ` => loopback 7401
PORT=6201 => loopback 7401`},
	{"settings of several stages in a loop", `-- Procfile --
web: bash run.sh
-- base.env --
PORT=7402
-- local.env --
HOST=0.0.0.0
-- run.sh --
HOST=127.0.0.1
for file in base.env local.env missing.env; do
  if [ -f "$file" ]; then
    set -a; . "./$file"; set +a
  fi
done
exec node -e "require('http').createServer().listen($PORT, '$HOST')"
`, ` => any 7402
PORT=6202 => any 7402`},
	{"read with several fields", `-- Procfile --
web: bash run.sh
-- address.txt --
127.0.0.1 7403 rest of the line
-- run.sh --
IFS=' ' read -r host port rest < address.txt
exec python3 -m http.server --bind "$host" "$port"
`, ` => loopback 7403`},
	{"a here string", `-- Procfile --
web: bash run.sh
-- run.sh --
IFS=: read -r host port <<< "${ADDRESS:-127.0.0.1:7404}"
exec python3 -m http.server --bind "$host" "$port"
`, ` => loopback 7404
ADDRESS=0.0.0.0:6204 => any 6204`},
	{"python from a here document", `-- Procfile --
web: sh run.sh
-- run.sh --
set -e
python3 - <<'PY'
import http.server, os
http.server.HTTPServer(("0.0.0.0", int(os.environ.get("PORT", 7405))), http.server.SimpleHTTPRequestHandler).serve_forever()
PY
`, ` => any 7405
PORT=6205 => any 6205`},
	{"a settings file that is not there", `-- Procfile --
web: ./start.sh
-- start.sh --
#!/bin/bash
if [[ -f .env ]]; then
  export $(grep -v '^#' .env | xargs)
fi
[ -e .env.local ] && source .env.local
exec python3 -m http.server "${PORT:-7406}"
`, ` => any 7406
PORT=6206 => any 6206`},
	{"socket.io alone", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"socket.io":"^4"}}
-- app.js --
const { Server } = require('socket.io');
const port = process.env.PORT ? parseInt(process.env.PORT) : 7106;
const io = new Server(port, { path: '/live' });
io.on('connection', () => {});
`, ` => any 7106
PORT=6006 => any 6006`},
	{"socket.io listen method", `-- Procfile --
web: node app.js
-- package.json --
{"name":"a","dependencies":{"socket.io":"^4"}}
-- app.js --
const io = require('socket.io')();
io.listen(+(process.env.PORT || 7107));
`, ` => any 7107
PORT=6007 => any 6007`},
	{"django runserver with custom command", `-- Procfile --
web: python manage.py serve
-- manage.py --
import os, sys
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "conf.settings")
from django.core.management import execute_from_command_line
if __name__ == "__main__":
    execute_from_command_line(sys.argv)
-- conf/__init__.py --
-- conf/settings.py --
SECRET_KEY = "x"
DEBUG = True
ROOT_URLCONF = "conf.urls"
INSTALLED_APPS = ["web"]
DATABASES = {}
USE_TZ = True
-- conf/urls.py --
urlpatterns = []
-- web/__init__.py --
-- web/management/__init__.py --
-- web/management/commands/__init__.py --
-- web/management/commands/serve.py --
import os
from django.core.management import call_command
from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "serve on the port of the host"

    def handle(self, *args, **options):
        call_command("runserver", f"0.0.0.0:{os.environ.get('PORT', '7143')}", use_reloader=False)
-- requirements.txt --
django
`, ` => any 7143
PORT=6043 => any 6043`},
	{"daphne endpoint", `-- Procfile --
web: daphne -e tcp:port=${PORT:-7144}:interface=127.0.0.1 web:app
-- web.py --
async def app(scope, receive, send):
    pass
-- requirements.txt --
daphne
`, ` => loopback 7144
PORT=6044 => loopback 6044`},
	{"unicorn with listen flags", `-- Procfile --
web: unicorn -l 127.0.0.1:7159 -l ${PORT:-7160}
-- config.ru --
run ->(e) { [200, {}, ['x']] }
-- Gemfile --
gem "unicorn"
`, ` => any 7160 & loopback 7159
PORT=6059 => any 6059 & loopback 7159`},
}

func TestSeenFirst(t *testing.T) {
	t.Parallel()
	for _, c := range seenFirst {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
