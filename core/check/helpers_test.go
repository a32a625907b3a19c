package check_test

import "testing"

// helpersSeen are servers whose settings and arguments libraries read, and what each did in
// the environments beside it.
var helpersSeen = []struct{ name, tree, want string }{
	{"dotenv-flow per environment", `-- Procfile --
web: node app.js
-- package.json --
{"name":"dome","dependencies":{"dotenv-flow":"4.1.0"}}
-- .env --
PORT=8601
HOST=127.0.0.1
-- .env.production --
HOST=0.0.0.0
-- .env.local --
PORT=8602
-- app.js --
require('dotenv-flow').config();
require('http').createServer().listen(process.env.PORT, process.env.HOST);
`, ` => loopback 8602
NODE_ENV=production => any 8602
PORT=5123 => loopback 5123`},
	{"dotenv-safe refuses", `-- Procfile --
web: node app.js
-- package.json --
{"name":"dome","dependencies":{"dotenv-safe":"9.1.0"}}
-- .env.example --
PORT=
-- app.js --
require('dotenv-safe').config();
require('http').createServer().listen(process.env.PORT);
`, ` => exits
PORT=5123 => any 5123`},
	{"restana", `-- Procfile --
web: node app.js
-- package.json --
{"name":"dome","dependencies":{"restana":"4.9.0"}}
-- app.js --
const service = require('restana')();
service.get('/', (req, res) => res.send('x'));
service.start(process.env.PORT || 8612).then(() => {});
`, ` => any 8612
PORT=5123 => any 5123`},
	{"fire", `-- Procfile --
web: /usr/bin/python3 app.py serve --port=5304
-- requirements.txt --
fire==0.5.0
-- app.py --
import fire
from http.server import HTTPServer, BaseHTTPRequestHandler

class Dome:
    def serve(self, port=8621, host="127.0.0.1"):
        HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()

if __name__ == "__main__":
    fire.Fire(Dome)
`, ` => loopback 5304`},
	{"docopt", `-- Procfile --
web: /usr/bin/python3 app.py --port 5305
-- requirements.txt --
docopt==0.6.2
-- app.py --
"""Dome.

Usage:
  app.py [--port=<n>] [--host=<h>]

Options:
  --port=<n>  the port [default: 8622]
  --host=<h>  the host [default: 127.0.0.1]
"""
from docopt import docopt
from http.server import HTTPServer, BaseHTTPRequestHandler
args = docopt(__doc__)
HTTPServer((args["--host"], int(args["--port"])), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 5305`},
	{"configargparse", `-- Procfile --
web: /usr/bin/python3 app.py
-- requirements.txt --
configargparse==1.5.3
-- app.py --
import configargparse
from http.server import HTTPServer, BaseHTTPRequestHandler
p = configargparse.ArgParser()
p.add("--port", env_var="DOME_PORT", type=int, default=8623)
p.add("--host", env_var="DOME_HOST", default="127.0.0.1")
o = p.parse_args()
HTTPServer((o.host, o.port), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8623
DOME_PORT=5123 => loopback 5123`},
	{"jetty embedded", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main
-- src/Main.java --
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;

public class Main {
    public static void main(String[] args) throws Exception {
        Server server = new Server();
        ServerConnector connector = new ServerConnector(server);
        connector.setHost("127.0.0.1");
        connector.setPort(Integer.parseInt(System.getenv().getOrDefault("PORT", "8630")));
        server.addConnector(connector);
        server.start();
        server.join();
    }
}
`, ` => loopback 8630
PORT=5123 => loopback 5123`},
	{"netty", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main
-- src/Main.java --
import io.netty.bootstrap.ServerBootstrap;
import io.netty.channel.*;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.channel.socket.SocketChannel;
import io.netty.channel.socket.nio.NioServerSocketChannel;

public class Main {
    public static void main(String[] args) throws Exception {
        EventLoopGroup boss = new NioEventLoopGroup(1), worker = new NioEventLoopGroup();
        try {
            ServerBootstrap b = new ServerBootstrap();
            b.group(boss, worker).channel(NioServerSocketChannel.class)
                .childHandler(new ChannelInitializer<SocketChannel>() {
                    @Override public void initChannel(SocketChannel ch) { }
                });
            int port = Integer.parseInt(System.getenv("PORT") != null ? System.getenv("PORT") : "8632");
            Channel ch = b.bind("0.0.0.0", port).sync().channel();
            ch.closeFuture().sync();
        } finally {
            boss.shutdownGracefully();
            worker.shutdownGracefully();
        }
    }
}
`, ` => any 8632
PORT=5123 => any 5123`},
	{"picocli", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main --port 5308
-- src/Main.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(name = "dome")
public class Main implements Callable<Integer> {
    @Option(names = {"-p", "--port"}, defaultValue = "8633")
    int port;

    @Option(names = "--host", defaultValue = "${env:DOME_HOST:-127.0.0.1}")
    String host;

    @Override
    public Integer call() throws Exception {
        HttpServer.create(new InetSocketAddress(host, port), 0).start();
        Thread.currentThread().join();
        return 0;
    }

    public static void main(String[] args) {
        System.exit(new CommandLine(new Main()).execute(args));
    }
}
`, ` => loopback 5308
DOME_HOST=0.0.0.0 => any 5308`},
	{"jcommander", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main -port 5309
-- src/Main.java --
import com.beust.jcommander.JCommander;
import com.beust.jcommander.Parameter;
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Main {
    @Parameter(names = {"-port", "--port"})
    private Integer port = 8634;

    public static void main(String[] argv) throws Exception {
        Main main = new Main();
        JCommander.newBuilder().addObject(main).build().parse(argv);
        HttpServer.create(new InetSocketAddress(main.port), 0).start();
    }
}
`, ` => any 5309`},
	{"typesafe config", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main
-- src/application.conf --
dome {
  host = "127.0.0.1"
  port = 8635
  port = ${?PORT}
}
-- src/Main.java --
import com.sun.net.httpserver.HttpServer;
import com.typesafe.config.Config;
import com.typesafe.config.ConfigFactory;
import java.net.InetSocketAddress;

public class Main {
    public static void main(String[] argv) throws Exception {
        Config conf = ConfigFactory.load().getConfig("dome");
        HttpServer.create(new InetSocketAddress(conf.getString("host"), conf.getInt("port")), 0).start();
    }
}
`, ` => loopback 8635
PORT=5123 => loopback 5123`},
	{"gson settings", `-- Procfile --
web: java -cp "out:/usr/share/java/*" Main
-- settings.json --
{"host": "127.0.0.1", "port": 8636}
-- src/Main.java --
import com.google.gson.Gson;
import com.sun.net.httpserver.HttpServer;
import java.io.FileReader;
import java.net.InetSocketAddress;

public class Main {
    static class Settings { String host = "localhost"; int port = 1; }

    public static void main(String[] argv) throws Exception {
        Settings s = new Gson().fromJson(new FileReader("settings.json"), Settings.class);
        String p = System.getenv("PORT");
        if (p != null) s.port = Integer.parseInt(p);
        HttpServer.create(new InetSocketAddress(s.host, s.port), 0).start();
    }
}
`, ` => loopback 8636
PORT=5123 => loopback 5123`},
	{"dry configurable", `-- Procfile --
web: ruby server.rb
-- Gemfile --
gem 'dry-configurable'
-- server.rb --
require 'dry-configurable'
require 'socket'
class App
  extend Dry::Configurable
  setting :host, '127.0.0.1'
  setting :port, 8712
end
App.configure do |config|
  config.port = ENV['PORT'].to_i if ENV['PORT']
end
server = TCPServer.new(App.config.host, App.config.port)
loop { server.accept.close }
`, ` => loopback 8712
PORT=5123 => loopback 5123`},
	{"string template of a yaml", `-- Procfile --
web: python3 app.py
-- requirements.txt --
pyyaml==6.0
-- settings.yaml --
server:
  host: 127.0.0.1
  port: $PORT
-- app.py --
import os
from collections import ChainMap
from string import Template
from http.server import HTTPServer, BaseHTTPRequestHandler
import yaml
with open("settings.yaml") as f:
    text = Template(f.read()).substitute(ChainMap(os.environ, {"PORT": "8719"}))
conf = yaml.safe_load(text)["server"]
HTTPServer((conf["host"], conf["port"]), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8719
PORT=5123 => loopback 5123`},
	{"nest config service", `-- Procfile --
web: npx tsx src/main.ts
-- package.json --
{"name":"dome","dependencies":{"@nestjs/core":"10.4.0","@nestjs/common":"10.4.0","@nestjs/platform-express":"10.4.0","tsx":"4.19.0"}}
-- tsconfig.json --
{"compilerOptions":{"experimentalDecorators":true,"emitDecoratorMetadata":true,"module":"commonjs","target":"es2021"}}
-- src/config.service.ts --
import { Injectable } from '@nestjs/common';
@Injectable()
export class ConfigService {
  private readonly values = { PORT: process.env.PORT ?? '8724', HOST: '127.0.0.1' };
  get(key: 'PORT' | 'HOST'): string { return this.values[key]; }
  get port(): number { return parseInt(this.get('PORT'), 10); }
}
-- src/app.module.ts --
import { Module } from '@nestjs/common';
import { ConfigService } from './config.service';
@Module({ providers: [ConfigService], exports: [ConfigService] })
export class AppModule {}
-- src/main.ts --
import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module';
import { ConfigService } from './config.service';
async function bootstrap() {
  const app = await NestFactory.create(AppModule, { logger: false });
  const config = app.get(ConfigService);
  await app.listen(config.port, config.get('HOST'));
}
void bootstrap();
`, ` => loopback 8724
PORT=5123 => loopback 5123`},
	{"nest with injected services", `-- Procfile --
web: npx tsx src/main.ts
-- package.json --
{"name":"dome","dependencies":{"@nestjs/core":"10.4.0","@nestjs/common":"10.4.0","@nestjs/platform-express":"10.4.0","tsx":"4.19.0"}}
-- tsconfig.json --
{"compilerOptions":{"experimentalDecorators":true,"emitDecoratorMetadata":true,"module":"commonjs","target":"es2021"}}
-- src/env.service.ts --
import { Injectable } from '@nestjs/common';
@Injectable()
export class EnvService {
  private readonly env = process.env;
  get(key: string, fallback: string): string { return this.env[key] ?? fallback; }
}
-- src/server.service.ts --
import { Inject, Injectable } from '@nestjs/common';
import { EnvService } from './env.service';
@Injectable()
export class ServerService {
  constructor(@Inject(EnvService) private readonly env: EnvService) {}
  get port() { return Number(this.env.get('PORT', '8801')); }
  get host() { return this.env.get('HOST', '127.0.0.1'); }
}
-- src/app.module.ts --
import { Module } from '@nestjs/common';
import { EnvService } from './env.service';
import { ServerService } from './server.service';
@Module({ providers: [EnvService, ServerService] })
export class AppModule {}
-- src/main.ts --
import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module';
import { ServerService } from './server.service';
async function bootstrap() {
  const app = await NestFactory.create(AppModule, { logger: false });
  const server = app.get(ServerService);
  await app.listen(server.port, server.host);
}
bootstrap();
`, ` => loopback 8801
PORT=5123 => loopback 5123
PORT=5124 HOST=0.0.0.0 => any 5124`},
	{"python settings by class per stage", `-- Procfile --
web: python3 run.py
-- requirements.txt --
flask==3.0.3
-- settings.py --
import os


class Config:
    HOST = "127.0.0.1"
    PORT = 4700
    DEBUG = False

    @classmethod
    def load(cls):
        stage = os.environ.get("STAGE", "development")
        for sub in cls.__subclasses__():
            if sub.__name__.lower() == stage:
                return sub()
        raise RuntimeError(f"no settings for {stage}")

    def __init__(self):
        if "PORT" in os.environ:
            self.PORT = int(os.environ["PORT"])


class Development(Config):
    DEBUG = True


class Production(Config):
    HOST = "0.0.0.0"
    PORT = 4701
-- run.py --
from wsgiref.simple_server import make_server
from settings import Config

config = Config.load()


def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"dome"]


if __name__ == "__main__":
    make_server(config.HOST, config.PORT, app).serve_forever()
`, ` => loopback 4700
STAGE=production => any 4701
STAGE=production PORT=5123 => any 5123
STAGE=nowhere => exits`},
	{"go config with layered sources", `-- Procfile --
web: ./dome -config settings.json
-- go.mod --
module example.org/dome
go 1.22
-- settings.json --
{"http": {"host": "127.0.0.1", "port": 5101}}
-- source.go --
package main

import (
	"os"
	"strconv"
)

type source interface {
	String(key string) (string, bool)
}

type envSource struct{ prefix string }

func (e envSource) String(key string) (string, bool) { return os.LookupEnv(e.prefix + key) }

type mapSource map[string]string

func (m mapSource) String(key string) (string, bool) { v, ok := m[key]; return v, ok }

type chain []source

func (c chain) String(key string) (string, bool) {
	for _, s := range c {
		if v, ok := s.String(key); ok {
			return v, true
		}
	}
	return "", false
}

func intOr(s source, key string, def int) int {
	if v, ok := s.String(key); ok {
		if n, err := strconv.Atoi(v); err == nil {
			return n
		}
	}
	return def
}
-- main.go --
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"log"
	"net/http"
	"os"
	"strings"
)

func flatten(prefix string, in map[string]any, out mapSource) {
	for k, v := range in {
		key := strings.ToUpper(prefix + k)
		switch v := v.(type) {
		case map[string]any:
			flatten(prefix+k+"_", v, out)
		default:
			out[key] = fmt.Sprint(v)
		}
	}
}

func main() {
	path := flag.String("config", "", "file")
	flag.Parse()
	file := mapSource{}
	if *path != "" {
		raw, err := os.ReadFile(*path)
		if err != nil {
			log.Fatal(err)
		}
		var tree map[string]any
		if err := json.Unmarshal(raw, &tree); err != nil {
			log.Fatal(err)
		}
		flatten("", tree, file)
	}
	settings := chain{envSource{"DOME_"}, file}
	host, _ := settings.String("HTTP_HOST")
	addr := fmt.Sprintf("%s:%d", host, intOr(settings, "HTTP_PORT", 8080))
	log.Fatal(http.ListenAndServe(addr, nil))
}
`, ` => loopback 5101
DOME_HTTP_PORT=5123 => loopback 5123
DOME_HTTP_HOST=0.0.0.0 DOME_HTTP_PORT=5124 => any 5124`},
	{"ruby config object with method missing", `-- Procfile --
web: ruby server.rb
-- server.rb --
require 'socket'
class Env
  def initialize(prefix, defaults)
    @prefix = prefix
    @defaults = defaults
  end

  def method_missing(name, *args)
    key = name.to_s
    value = ENV["#{@prefix}_#{key.upcase}"] || @defaults[name]
    raise KeyError, key if value.nil?
    @defaults[name].is_a?(Integer) ? Integer(value) : value
  end

  def respond_to_missing?(*) = true
end
env = Env.new('DOME', host: 'localhost', port: 5203)
server = TCPServer.new(env.host, env.port)
loop { Thread.start(server.accept) { |c| c.close } }
`, ` => loopback 5203
DOME_PORT=5123 DOME_HOST=0.0.0.0 => any 5123`},
	{"php with a container", `-- Procfile --
web: php bin/console serve --host=127.0.0.1
-- src/Container.php --
<?php
namespace App;

class Container
{
    private array $factories = [];
    private array $made = [];

    public function set(string $id, callable $f): void { $this->factories[$id] = $f; }
    public function get(string $id): mixed { return $this->made[$id] ??= ($this->factories[$id])($this); }
}
-- src/Serve.php --
<?php
namespace App;

class Serve
{
    public function __construct(private array $config) {}

    public function __invoke(array $options): int
    {
        $host = $options['host'] ?? $this->config['host'];
        $address = "tcp://$host:{$this->config['port']}";
        $server = @stream_socket_server($address, $code, $message);
        if ($server === false) {
            fwrite(STDERR, $message . PHP_EOL);
            return 1;
        }
        while (true) {
            if ($c = @stream_socket_accept($server, 30)) fclose($c);
        }
    }
}
-- bin/console --
#!/usr/bin/env php
<?php
spl_autoload_register(function (string $class) {
    $file = __DIR__ . '/../src/' . str_replace(['App\\', '\\'], ['', '/'], $class) . '.php';
    if (is_file($file)) require $file;
});

use App\Container;
use App\Serve;

$c = new Container();
$c->set('config', fn () => ['host' => '0.0.0.0', 'port' => (int) ($_SERVER['APP_PORT'] ?? 5301)]);
$c->set(Serve::class, fn (Container $c) => new Serve($c->get('config')));

$options = [];
foreach (array_slice($argv, 2) as $arg) {
    if (preg_match('/^--(\w+)=(.*)$/', $arg, $m)) $options[$m[1]] = $m[2];
}
$commands = ['serve' => Serve::class];
if (!isset($commands[$argv[1] ?? ''])) {
    fwrite(STDERR, "unknown command\n");
    exit(2);
}
exit(($c->get($commands[$argv[1]]))($options));
`, ` => loopback 5301
APP_PORT=5123 => loopback 5123`},
	{"java layered configuration with interfaces", `-- Procfile --
web: java -Ddome.host=127.0.0.1 -cp out dome.Main --port=5401
-- src/dome/Source.java --
package dome;

import java.util.Map;
import java.util.Optional;

public interface Source {
    Optional<String> get(String key);

    default Source or(Source other) {
        return key -> get(key).or(() -> other.get(key));
    }

    static Source env(String prefix) {
        return key -> Optional.ofNullable(System.getenv(prefix + key.toUpperCase()));
    }

    static Source properties(String prefix) {
        return key -> Optional.ofNullable(System.getProperty(prefix + key));
    }

    static Source of(Map<String, String> map) {
        return key -> Optional.ofNullable(map.get(key));
    }
}
-- src/dome/Main.java --
package dome;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;

public class Main {
    public static void main(String[] args) throws Exception {
        Map<String, String> flags = Arrays.stream(args)
            .filter(a -> a.startsWith("--") && a.contains("="))
            .map(a -> a.substring(2).split("=", 2))
            .collect(Collectors.toMap(p -> p[0], p -> p[1]));
        Source settings = Source.env("DOME_").or(Source.of(flags)).or(Source.properties("dome."))
            .or(Source.of(Map.of("host", "0.0.0.0", "port", "5400")));
        int port = settings.get("port").map(Integer::parseInt).orElseThrow();
        String host = settings.get("host").get();
        HttpServer.create(new InetSocketAddress(host, port), 0).start();
    }
}
`, ` => loopback 5401
DOME_PORT=5123 => loopback 5123`},
	{"go with slog and context values", `-- Procfile --
web: ./dome
-- go.mod --
module example.org/dome
go 1.22
-- main.go --
package main

import (
	"errors"
	"log/slog"
	"net"
	"net/http"
	"os"
)

func address(raw string) (string, error) {
	if raw == "" {
		return ":6101", nil
	}
	if _, _, err := net.SplitHostPort(raw); err != nil {
		var ae *net.AddrError
		if errors.As(err, &ae) && ae.Err == "missing port in address" {
			return net.JoinHostPort(raw, "6101"), nil
		}
		return "", err
	}
	return raw, nil
}

func main() {
	addr, err := address(os.Getenv("DOME_LISTEN"))
	if err != nil {
		slog.Error("address", "err", err)
		os.Exit(1)
	}
	slog.Info("listening", "addr", addr)
	if err := http.ListenAndServe(addr, http.NotFoundHandler()); err != nil {
		slog.Error("serve", "err", err)
		os.Exit(1)
	}
}
`, ` => any 6101
DOME_LISTEN=127.0.0.1 => loopback 6101
DOME_LISTEN=127.0.0.1:5123 => loopback 5123`},
	{"php env file and match", `-- Procfile --
web: php server.php
-- server.php --
<?php
$env = getenv('APP_ENV') ?: 'dev';
[$host, $port] = match ($env) {
    'dev', 'test' => ['127.0.0.1', 6301],
    'prod' => ['0.0.0.0', (int) (getenv('PORT') ?: 6302)],
};
$server = socket_create_listen($port) ?: null;
if ($host !== '0.0.0.0') {
    socket_close($server);
    $server = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
    socket_bind($server, $host, $port);
    socket_listen($server);
}
while ($c = socket_accept($server)) socket_close($c);
`, ` => loopback 6301
APP_ENV=prod => any 6302
APP_ENV=prod PORT=5123 => any 5123
APP_ENV=weird => exits`},
	{"java properties with environment override", `-- Procfile --
web: java -cp out App
-- src/app.properties --
server.port = 6401
server.host = localhost
-- src/App.java --
import com.sun.net.httpserver.HttpServer;
import java.io.*;
import java.net.*;
import java.util.*;

public class App {
    private final Properties props = new Properties();

    App() throws IOException {
        try (var in = App.class.getResourceAsStream("/app.properties")) {
            props.load(Objects.requireNonNull(in, "app.properties"));
        }
        for (String key : props.stringPropertyNames()) {
            String name = "APP_" + key.toUpperCase(Locale.ROOT).replace('.', '_');
            Optional.ofNullable(System.getenv(name)).ifPresent(v -> props.setProperty(key, v));
        }
    }

    int integer(String key) { return Integer.parseInt(props.getProperty(key).trim()); }

    public static void main(String[] args) throws Exception {
        App app = new App();
        var server = HttpServer.create();
        server.bind(new InetSocketAddress(app.props.getProperty("server.host"), app.integer("server.port")), 0);
        server.createContext("/", e -> { e.sendResponseHeaders(200, -1); e.close(); });
        server.start();
    }
}
`, ` => loopback 6401
APP_SERVER_PORT=5123 => loopback 5123
APP_SERVER_HOST=0.0.0.0 => any 6401`},
	{"shell that picks a server by what is there", `-- Procfile --
web: sh run.sh
-- run.sh --
#!/bin/sh
set -eu
cd -- "$(dirname -- "$0")"
PORT="${PORT-6701}"
if [ -f app/main.py ]; then
  exec python3 app/main.py --port="$PORT"
elif [ -f index.html ]; then
  exec python3 -m http.server "$PORT"
fi
echo "nothing to serve" >&2
exit 1
-- app/main.py --
import argparse
from http.server import HTTPServer, BaseHTTPRequestHandler
p = argparse.ArgumentParser()
p.add_argument("--port", type=int, required=True)
p.add_argument("--host", default="0.0.0.0")
a = p.parse_args()
HTTPServer((a.host, a.port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 6701
PORT=5123 => any 5123`},
	{"Figaro and its file", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source 'https://rubygems.org'
gem 'figaro', '1.2.0'
-- config/application.yml --
PORT: 8033
HOST: 127.0.0.1
production:
  HOST: 0.0.0.0
-- app.rb --
require 'figaro'
require 'socket'
Figaro.application = Figaro::Application.new(environment: ENV['STAGE'] || 'local', path: 'config/application.yml')
Figaro.load
TCPServer.new(Figaro.env.host, Figaro.env.port!).accept
`, ` => loopback 8033
STAGE=production => any 8033
PORT=5123 => loopback 5123`},
}

func TestHelpersSeen(t *testing.T) {
	t.Parallel()
	for _, c := range helpersSeen {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
