package check_test

import "testing"

// oddValues are what programs make of variables that are empty, no number, or out of range; each was
// run, and what it did was read from the kernel.
var oddValues = []told{
	{"object assign with texts", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const env = process.env;
const o = Object.assign({ port: 7801 }, env.PORT && { port: env.PORT }, env.HOST && { host: env.HOST });
require('http').createServer((q, r) => r.end()).listen(o);
`, `PORT= => any 7801
PORT=9501 => any 9501
PORT=0 => any 0`},
	{"spread of a text", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a"}
-- a.js --
const env = process.env;
const o = { port: 7802, ...(env.PORT && { port: env.PORT }), ...(env.NOPE || '') };
require('http').createServer((q, r) => r.end()).listen(o.port);
`, `PORT= => any 7802
PORT=9502 => any 9502`},
	{"go and the host 0", `-- Procfile --
web: ./app
-- go.mod --
module app

go 1.22
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
)

func main() { log.Fatal(http.ListenAndServe(net.JoinHostPort(os.Getenv("HOST"), "7803"), nil)) }
`, `HOST=0 => exits
HOST=0.0.0.0 => any 7803`},
	{"php port with blanks", `-- Procfile --
web: php a.php
-- a.php --
<?php
$s = stream_socket_server('tcp://0.0.0.0:' . getenv('PORT'));
while ($c = stream_socket_accept($s, -1)) fclose($c);
`, `PORT=' 9504' => any 9504
PORT=9504x => any 9504`},
	{"sinatra with a port set in code", `-- Procfile --
web: ruby a.rb
-- a.rb --
require 'sinatra/base'
class A < Sinatra::Base
  set :port, 7805
  get('/') { 'x' }
  run!
end
`, `PORT=-1 => loopback 7805
PORT=9505 => loopback 7805
PORT=x => exits`},
	{"sirv with empty variables", `-- Procfile --
web: sirv public
-- package.json --
{"name":"a","dependencies":{"sirv-cli":"^3"}}
-- public/index.html --
x
`, `PORT= => loopback 8080
HOST= => loopback 8080
PORT=9506 HOST=0.0.0.0 => any 9506`},
	{"serve with an empty variable", `-- Procfile --
web: serve public
-- package.json --
{"name":"a","dependencies":{"serve":"^14"}}
-- public/index.html --
x
`, `PORT= => exits
PORT=9507 => any 9507`},
}

func TestOddValues(t *testing.T) {
	t.Parallel()
	agree(t, oddValues)
}
