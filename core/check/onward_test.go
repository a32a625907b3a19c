package check_test

import (
	"strings"
	"testing"
)

// onward are programs with parts that are not understood: those that change nothing that
// counts are passed over, those that may do decide nothing.
var onward = []struct{ name, tree, want string }{
	{"Go: a variable of a package, and what a text is made of", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25

require example.org/sky v1.0.0
-- main.go --
package main

import (
	"bytes"
	"fmt"
	"net/http"
	"os"
	"strings"

	"example.org/sky"
)

var index = map[sky.Key]int{sky.First: 1, sky.Second: 2}

func banner(s sky.Star) string {
	var b strings.Builder
	b.WriteString("gate ")
	b.WriteString(s.Name())
	b.Write([]byte{'\n'})
	return b.String()
}

func main() {
	var out bytes.Buffer
	fmt.Fprint(&out, banner(sky.New()), len(index))
	os.Stdout.WriteString(out.String())
	port := os.Getenv("PORT")
	if port == "" {
		port = "8611"
	}
	http.ListenAndServe(":"+port, nil)
}
`, " => any 8611\nPORT=5123 => any 5123"},
	{"Go: a fault that is made of what is not understood is one", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25

require example.org/sky v1.0.0
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"

	"example.org/sky"
)

func address() (sky.Place, string, error) {
	if os.Getenv("PORT") == "none" {
		return sky.Place{Name: "gate"}, "", sky.Errorf("no port at %s", "gate")
	}
	return sky.Place{}, ":" + os.Getenv("PORT"), nil
}

func main() {
	_, at, err := address()
	if err != nil {
		log.Fatal(err)
	}
	http.ListenAndServe(at, nil)
}
`, "PORT=5123 => any 5123\nPORT=none => exits"},
	{"Go: an error that is handed on, where there is none", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25

require github.com/pkg/errors v0.9.1
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"

	"github.com/pkg/errors"
)

func prepare() error {
	err := os.MkdirAll(os.TempDir()+"/gate", 0o755)
	return errors.Wrap(err, "prepare")
}

func main() {
	if err := prepare(); err != nil {
		log.Fatal(err)
	}
	http.ListenAndServe("127.0.0.1:8619", nil)
}
`, " => loopback 8619"},
	{"Go: a file that is built for something else, in the older form", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.17
-- debug.go --
// +build debug

package main

import "net/http"

func init() { go http.ListenAndServe("localhost:6071", nil) }
-- main.go --
package main

import "net/http"

func main() { http.ListenAndServe(":8612", nil) }
`, " => any 8612"},
	{"Go: a function of a package that is called Serve", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25

require (
	example.org/sky v1.0.0
	github.com/gin-gonic/gin v1.10.0
)
-- main.go --
package main

import (
	"example.org/sky"
	"github.com/gin-gonic/gin"
)

func main() {
	r := gin.New()
	r.Use(sky.Serve("/", "public"))
	r.Run(":8613")
}
`, " => any 8613"},
	{"Go: a server of fasthttp with certificates made by itself", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25

require github.com/valyala/fasthttp v1.55.0
-- main.go --
package main

import "github.com/valyala/fasthttp"

func main() {
	s := &fasthttp.Server{Handler: func(ctx *fasthttp.RequestCtx) {}}
	cert, key, err := fasthttp.GenerateTestCertificate("gate")
	if err != nil {
		panic(err)
	}
	if err = s.AppendCertEmbed(cert, key); err != nil {
		panic(err)
	}
	panic(s.ListenAndServeTLS("127.0.0.1:8614", "", ""))
}
`, " => loopback 8614"},
	{"Go: a certificate that is not there", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"log"
	"net/http"
)

func main() { log.Fatal(http.ListenAndServeTLS(":8615", "gate.pem", "gate.key", nil)) }
`, " => exits"},
	{"Go: a type that reads itself", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- gate.json --
{"port": "low+8616", "host": "127.0.0.1", "wait": "5s"}
-- main.go --
package main

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"strconv"
	"strings"
	"time"
)

type port int

func (p *port) UnmarshalText(b []byte) error {
	_, text, found := strings.Cut(string(b), "+")
	if !found {
		return fmt.Errorf("no port: %q", b)
	}
	n, err := strconv.Atoi(text)
	*p = port(n)
	return err
}

type wait time.Duration

func (w *wait) UnmarshalJSON(b []byte) error {
	d, err := time.ParseDuration(strings.Trim(string(b), "\""))
	*w = wait(d)
	return err
}

func main() {
	var c struct {
		Port port
		Host string
		Wait wait
	}
	name := os.Getenv("GATE")
	if name == "" {
		name = "gate.json"
	}
	f, err := os.Open(name)
	if err != nil {
		os.Exit(1)
	}
	if err := json.NewDecoder(f).Decode(&c); err != nil {
		os.Exit(2)
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", c.Host, c.Port), nil)
}
`, " => loopback 8616\nGATE=none.json => exits"},
	{"Go: data with many parts", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"encoding/json"
	"net/http"
	"os"
)

func main() {
	var stars []struct{ Name string }
	if err := json.Unmarshal([]byte(` + "`[" + strings.Repeat(`{"Name": "a"}, `, 300) + `{"Name": "b"}]` + "`" + `), &stars); err != nil {
		os.Exit(1)
	}
	http.ListenAndServe("127.0.0.1:8617", nil)
}
`, " => loopback 8617"},
	{"Node.js: a process that makes others and comes back", `-- Procfile --
web: node s.js
-- package.json --
{"name": "gate"}
-- s.js --
;(function () {
  var cluster = require('cluster');
  if (cluster.isMaster) {
    return cluster.fork() && cluster.on('exit', function () { cluster.fork(); });
  }
  var config = { port: process.env.PORT || 8621 };
  config.server = require('http').createServer();
  var all = { web: config.server.listen(config.port) };
}());
`, " => any 8621\nPORT=5123 => any 5123"},
	{"Node.js: a folder that is there, and options that a function reads", `-- Procfile --
web: node s.js --at 127.0.0.1:8622
-- package.json --
{"name": "gate", "dependencies": {"arg": "5.0.2", "is-port-reachable": "4.0.0"}}
-- public/index.html --
<p>gate</p>
-- s.js --
const fs = require('fs');
const arg = require('arg');
const busy = require('is-port-reachable');
const args = arg({ '--at': [(text) => { const [host, port] = text.split(':'); return { host, port: Number(port) }; }], '--public': String });
if (!fs.existsSync(args['--public'] || 'public') || !fs.existsSync('.')) process.exit(1);
(async () => {
  for (const { host, port } of args['--at']) {
    require('http').createServer().listen((await busy(port)) ? 0 : port, host);
  }
})();
`, " => loopback 8622"},
	{"Python: sockets for single messages", `-- Procfile --
web: python3 s.py
-- s.py --
import os
import socket

log = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
log.bind(("127.0.0.1", 8631))
clock = socket.socket(type=socket.SOCK_DGRAM)
clock.bind(("127.0.0.1", 8632))
web = socket.socket()
web.bind(("127.0.0.1", int(os.environ.get("PORT", 8633))))
web.listen()
while True:
    web.accept()
`, " => loopback 8633\nPORT=5123 => loopback 5123"},
	{"Python: a socket that is a file", `-- Procfile --
web: python3 s.py
-- s.py --
from twisted.internet import protocol, reactor

reactor.listenUNIX("gate.sock", protocol.ServerFactory())
reactor.run()
`, " => unix:gate.sock"},
	{"Python: settings of gunicorn that the environment chooses", `-- Procfile --
web: gunicorn -c "$GATE_CONF" app:app
-- conf/near.py --
bind = "127.0.0.1:8634"
-- conf/far.py --
import os

bind = "0.0.0.0:%d" % int(os.environ.get("PORT", 8635))
-- app.py --
app = lambda environ, start: (start("200 OK", []), [b""])[1]
`, "GATE_CONF=conf/near.py => loopback 8634\nGATE_CONF=conf/far.py => any 8635\nGATE_CONF=conf/far.py PORT=5123 => any 5123\nGATE_CONF=conf/none.py => unknown"},
	{"Python: a dictionary whose keys are attributes, and functions by their names", `-- Procfile --
web: python3 gate.py
-- gate.py --
import os
from http.server import BaseHTTPRequestHandler, HTTPServer


class Settings(dict):
    def __getattr__(self, name):
        value = self[name]
        return Settings(value) if isinstance(value, dict) else value


def serve_plain(port):
    HTTPServer(("127.0.0.1", port), BaseHTTPRequestHandler).serve_forever()


settings = Settings({"http": {"port": int(os.environ.get("PORT", 8636))}})
globals()["serve_" + os.environ.get("GATE", "plain")](settings.http.port)
`, " => loopback 8636\nPORT=5123 => loopback 5123"},
	{"Ruby: a server of EventMachine", `-- Procfile --
web: ruby gate.rb
-- Gemfile --
source 'https://rubygems.org'
gem 'eventmachine'
-- gate.rb --
require 'eventmachine'

class Gate < EM::Connection
  def receive_data(data) = send_data(data)
end

EventMachine.run do
  Signal.trap('TERM') { EventMachine.stop }
  EventMachine.start_server('0.0.0.0', Integer(ENV.fetch('PORT', 8645)), Gate)
end
`, " => any 8645\nPORT=5123 => any 5123\nPORT=x => exits"},
	{"a script: one or the other", `-- Procfile --
web: sh start.sh
-- start.sh --
HOST=$( [ "${OPEN:-yes}" = yes ] && echo 0.0.0.0 || echo 127.0.0.1 )
[ -n "$PORT" ] && echo given || PORT=8641
exec python3 -m http.server --bind "$HOST" "$PORT"
`, " => any 8641\nOPEN=no => loopback 8641\nPORT=5123 => any 5123"},
	{"Java: an argument of Spring beats a system property", `-- Procfile --
web: java -Dserver.port=8646 -Dspring.profiles.active=far -jar target/gate.jar --server.port=8647 --spring.profiles.active=near
-- pom.xml --
<project xmlns="http://maven.apache.org/POM/4.0.0"><modelVersion>4.0.0</modelVersion>
  <parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>3.5.0</version></parent>
  <groupId>obs</groupId><artifactId>gate</artifactId><version>1</version>
  <dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies>
  <build><finalName>gate</finalName><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build>
</project>
-- src/main/resources/application-near.properties --
server.address=127.0.0.1
-- src/main/resources/application-far.properties --
server.address=0.0.0.0
-- src/main/java/obs/Gate.java --
package obs;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

@SpringBootApplication
public class Gate {
    public static void main(String[] args) {
        SpringApplication.run(Gate.class, args);
    }
}
`, " => loopback 8647\nSERVER_PORT=5123 => loopback 8647"},
	{"Rust: what an arm sets, and conditions of arms", `-- Procfile --
web: ./target/release/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;

fn main() {
    let mut port = 8651u16;
    match std::env::var("STAGE").as_deref() {
        Ok("dev") => port = 8652,
        Ok("test" | "try") => port += 5,
        _ => {}
    }
    let host = match std::env::var("HOST") {
        Ok(h) if h == "all" => "0.0.0.0",
        Ok(_) => "::1",
        Err(_) => "127.0.0.1",
    };
    let l = TcpListener::bind((host, port)).unwrap();
    for s in l.incoming() {
        drop(s);
    }
}
`, " => loopback 8651\nSTAGE=dev => loopback 8652\nSTAGE=try => loopback 8656\nHOST=all => any 8651"},
	{"Rust: what is lent to be set", `-- Procfile --
web: ./target/release/gate
-- Cargo.toml --
[package]
name = "gate"
version = "0.1.0"
edition = "2021"
-- src/main.rs --
use std::net::TcpListener;

fn main() {
    let mut port = 8653u16;
    raise(&mut port);
    let l = TcpListener::bind(("127.0.0.1", port)).unwrap();
    for s in l.incoming() {
        drop(s);
    }
}

fn raise(p: &mut u16) {
    *p += 1;
}
`, " => loopback 8654"},
}

func TestOnward(t *testing.T) {
	t.Parallel()
	for _, c := range onward {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}

// TestSeen compares what a report says of a program whose values alone would tell another
// story than going through it.
func TestSeen(t *testing.T) {
	t.Parallel()
	dir := plant(t, `-- Procfile --
web: python3 gate.py
-- gate.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler


class Gate:
    port = 80

    def __init__(self):
        for name in ("PORT", "GATE_PORT"):
            if name in os.environ:
                setattr(self, "port", int(os.environ[name]))
                break
        else:
            setattr(self, "port", 8661)


HTTPServer(("127.0.0.1", Gate().port), BaseHTTPRequestHandler).serve_forever()
`)
	for _, c := range run(t, dir, nil).Components {
		for _, s := range c.Starts {
			for _, l := range s.Listeners {
				if v := l.View; v.Interface != "loopback" || v.Variable != "PORT" || v.Fallback != "8661" {
					t.Errorf("it is shown as %s, %q, %q, not on loopback by PORT, else 8661", v.Interface, v.Variable, v.Fallback)
				}
			}
		}
	}
}

// TestStopped reads where following a program stopped that is known to listen nowhere.
func TestStopped(t *testing.T) {
	t.Parallel()
	dir := plant(t, `-- Procfile --
web: node gate.js
-- package.json --
{"name": "gate", "dependencies": {"sky": "1.0.0"}}
-- gate.js --
const sky = require('sky');
const open = sky.ways();
open[sky.first()](function (handler) {
  sky.keep(handler);
});
if (sky.clear()) {
  sky.begin(open);
} else {
  process.exit(1);
}
while (sky.next()) {
  open.push(sky.now());
}
`)
	for _, u := range run(t, dir, nil).Unknown {
		if strings.HasPrefix(u.Reason, "what node gate.js runs could be followed only up to here") && u.At.File == "gate.js" && u.At.Line > 1 {
			return
		}
	}
	t.Errorf("it is not said where following stopped: %v", run(t, dir, nil).Unknown)
}
