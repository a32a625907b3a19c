package check_test

import "testing"

// surrounds are servers whose place to listen is decided by what stands around them: a
// package that is installed or not, its version.
var surrounds = []struct{ name, tree, want string }{
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
}

func TestSurrounds(t *testing.T) {
	t.Parallel()
	for _, c := range surrounds {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
