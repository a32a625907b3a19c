package check_test

import "testing"

// surrounds are servers whose place to listen is decided by what stands around them: a
// package that is installed or not, its version.
var surrounds = []told{
	{"flask run without a manifest, with a .flaskenv", `-- Procfile --
web: flask run
-- .flaskenv --
FLASK_RUN_PORT=5955
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ` => unknown`},
	{"flask run with python-dotenv and a .flaskenv", `-- Procfile --
web: flask run
-- requirements.txt --
flask==2.2.2
python-dotenv==1.0.0
-- .flaskenv --
FLASK_RUN_PORT=5955
FLASK_RUN_HOST=0.0.0.0
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ` => any 5955
FLASK_RUN_PORT=6000 => any 6000`},
	{"flask run without python-dotenv in the manifest", `-- Procfile --
web: flask run
-- requirements.txt --
flask==2.2.2
-- .flaskenv --
FLASK_RUN_PORT=5955
-- app.py --
from flask import Flask
app = Flask(__name__)
`, ` => loopback 5000`},
	{"the options in config.ru with rack 2", `-- Procfile --
web: rackup
-- Gemfile --
source "https://rubygems.org"
gem "rack", "~> 2.2"
-- config.ru --
#\ -o 0.0.0.0 --port=4423
run proc { [200, {}, ["x"]] }
`, ` => any 4423
PORT=8423 => any 4423`},
	{"the options in config.ru beside those of the command", `-- Procfile --
web: rackup -p $PORT
-- Gemfile --
source "https://rubygems.org"
gem "rack", "~> 2.2"
-- config.ru --
#\ -p4423 -o 0.0.0.0
run proc { [200, {}, ["x"]] }
`, `PORT=8423 => any 8423`},
	{"the options in config.ru with rack 3", `-- Procfile --
web: rackup
-- Gemfile --
source "https://rubygems.org"
gem "rack", "~> 3.1"
gem "rackup", "~> 2.2"
-- config.ru --
#\ -p 4423 -o 0.0.0.0
run proc { [200, {}, ["x"]] }
`, ` => loopback 9292`},
	{"the options in config.ru with rack of some version", `-- Procfile --
web: rackup
-- Gemfile --
source "https://rubygems.org"
gem "rack"
-- config.ru --
#\ -p 4423
run proc { [200, {}, ["x"]] }
`, ` => unknown`},
	{"the options in config.ru with rack of the lock", `-- Procfile --
web: rackup
-- Gemfile --
source "https://rubygems.org"
gem "rack"
-- Gemfile.lock --
GEM
  remote: https://rubygems.org/
  specs:
    rack (2.2.13)

PLATFORMS
  ruby

DEPENDENCIES
  rack

BUNDLED WITH
   2.6.2
-- config.ru --
#\ -p 4423
run proc { [200, {}, ["x"]] }
`, ` => loopback 4423`},
	{"a server in the background beside a worker", `-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
node server.js &
node worker.js
-- server.js --
require("http").createServer().listen(process.env.PORT || 3000);
-- worker.js --
setInterval(() => {}, 1000);
`, ` => any 3000
PORT=5123 => any 5123`},
	{"two servers from one line", `-- Procfile --
web: node server.js & GAUGE=1 node gauge.js & wait
-- server.js --
require("http").createServer().listen(process.env.PORT || 3000);
-- gauge.js --
for (const p of [4001, 4002]) if (process.env.GAUGE) require("http").createServer().listen(p, "127.0.0.1");
`, `PORT=5123 => any 5123 & loopback 4001 & loopback 4002`},
}

func TestSurrounds(t *testing.T) {
	t.Parallel()
	agree(t, surrounds)
}

func TestBesideALastProgramThatIsNoServer(t *testing.T) {
	t.Parallel()
	const script = nodeManifest + `
-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
node server.js &
node worker.js
-- worker.js --
setInterval(() => {}, 1000);
`
	runCases(t, []ruleCase{
		{"the one in the background is judged", script + `
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(3000);
`, []string{"port/literal server.js:1 pushed=blocker"}},
		{"and it is sound", script + `
-- server.js --
require("express")().get("/", (q, r) => r.send("clear")).listen(process.env.PORT || 3000);
`, nil},
		{"one in the background behind a proxy is the proxy's matter", flaskManifest + flaskApp + `
-- Procfile --
web: sh start.sh
-- start.sh --
#!/bin/sh
gunicorn app:app --bind 127.0.0.1:8000 &
nginx -g "daemon off;" -c /app/nginx.conf
`, nil},
		{"neither listens", script + `
-- server.js --
setInterval(() => {}, 1000);
`, []string{"port/none start.sh:3 pushed=blocker"}},
	})
}
