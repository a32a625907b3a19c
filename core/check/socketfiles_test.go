package check_test

import "testing"

// socketFiles are servers on sockets that are files; each was run, and what it did was read
// from the kernel.
var socketFiles = []told{
	{"python raw unix", `-- Procfile --
web: python3 a.py
-- a.py --
import os
import socket
path = os.environ.get("SOCK", "p.sock")
s = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
s.bind(path)
s.listen(5)
while True:
    c, _ = s.accept()
    c.close()
`, ` => unix:p.sock
SOCK=q.sock => unix:q.sock`},
	{"python unixstreamserver", `-- Procfile --
web: python3 a.py
-- a.py --
import socketserver
class H(socketserver.StreamRequestHandler):
    def handle(self): pass
with socketserver.UnixStreamServer("run.sock", H) as s:
    s.serve_forever()
`, ` => unix:run.sock`},
	{"ruby unixserver", `-- Procfile --
web: ruby a.rb
-- a.rb --
require 'socket'
server = ENV['PORT'] ? TCPServer.new('0.0.0.0', ENV['PORT']) : UNIXServer.new(ENV.fetch('SOCK', 'y.sock'))
loop { server.accept.close }
`, ` => unix:y.sock
SOCK=z.sock => unix:z.sock
PORT=8090 => any 8090`},
	{"ruby unixserver open block", `-- Procfile --
web: ruby a.rb
-- a.rb --
require 'socket'
UNIXServer.open(File.join('.', 'k.sock')) do |s|
  loop { s.accept.close }
end
`, ` => unix:k.sock`},
	{"java unix domain", `-- Procfile --
web: java A.java
-- A.java --
import java.net.*;
import java.nio.channels.*;
public class A {
    public static void main(String[] a) throws Exception {
        String p = System.getenv().getOrDefault("SOCK", "j.sock");
        ServerSocketChannel ch = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
        ch.bind(UnixDomainSocketAddress.of(p));
        while (true) ch.accept().close();
    }
}
`, ` => unix:j.sock
SOCK=j2.sock => unix:j2.sock`},
	{"php unix", `-- Procfile --
web: php a.php
-- a.php --
<?php
$p = getenv('SOCK') ?: 'h.sock';
$s = socket_create(AF_UNIX, SOCK_STREAM, 0);
socket_bind($s, $p);
socket_listen($s);
while ($c = socket_accept($s)) socket_close($c);
`, ` => unix:h.sock
SOCK=h2.sock => unix:h2.sock`},
	{"php stream unix", `-- Procfile --
web: php a.php
-- a.php --
<?php
$s = stream_socket_server('unix://' . __DIR__ . '/t.sock');
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, ` => unix:t.sock`},
	{"rust unix", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::os::unix::net::UnixListener;
fn main() {
    let path = std::env::var("SOCK").unwrap_or("r.sock".into());
    let l = UnixListener::bind(&path).unwrap();
    for s in l.incoming() { drop(s); }
}
`, ` => unix:r.sock`},
	{"deno unix", `-- Procfile --
web: deno run -A a.ts
-- a.ts --
const sock = Deno.env.get("SOCK");
if (sock) Deno.serve({ path: sock }, () => new Response("x"));
else Deno.serve({ port: 8093, hostname: "127.0.0.1" }, () => new Response("x"));
`, ` => loopback 8093
SOCK=d.sock => unix:d.sock`},
	{"bun unix", `-- Procfile --
web: bun a.ts
-- a.ts --
Bun.serve({ ...(process.env.SOCK ? { unix: process.env.SOCK } : { port: 8094, hostname: "127.0.0.1" }), fetch: () => new Response("x") });
`, ` => loopback 8094
SOCK=bb.sock => unix:bb.sock`},
	{"aiohttp path", `-- Procfile --
web: python3 a.py
-- a.py --
import os
from aiohttp import web
app = web.Application()
if "SOCK" in os.environ:
    web.run_app(app, path=os.environ["SOCK"])
else:
    web.run_app(app, port=8095)
`, ` => any 8095
SOCK=aio.sock => unix:aio.sock`},
	{"waitress unix", `-- Procfile --
web: waitress-serve --unix-socket=w.sock a:app
-- a.py --
def app(e, s):
    s("200 OK", [])
    return [b""]
`, ` => unix:w.sock`},
	{"tornado unix", `-- Procfile --
web: python3 a.py
-- a.py --
import tornado.ioloop, tornado.web, tornado.httpserver
from tornado.netutil import bind_unix_socket
server = tornado.httpserver.HTTPServer(tornado.web.Application([]))
server.add_socket(bind_unix_socket("tor.sock"))
tornado.ioloop.IOLoop.current().start()
`, ` => unix:tor.sock`},
	{"puma bind unix", `-- Procfile --
web: puma -b unix://$PWD/pp.sock
-- config.ru --
run ->(env) { [200, {}, ['x']] }
`, ` => unix:pp.sock`},
}

func TestSocketFiles(t *testing.T) {
	t.Parallel()
	agree(t, socketFiles)
}
