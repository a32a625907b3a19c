package check_test

import (
	"os"
	"path/filepath"
	"testing"
)

const gateManifest = `
-- package.json --
{ "name": "gate", "engines": { "node": "24.x" }, "scripts": { "start": "node server.js" }, "dependencies": { "express": "5.1.0" } }
`

func TestShipCase(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"an import", gateManifest + `
-- server.js --
const stars = require("./Routes/stars");
require("express")().get("/", stars).listen(process.env.PORT || 3000);
-- routes/stars.js --
module.exports = (q, r) => r.send("up");
`, []string{"ship/case server.js:1 pushed=blocker"}},
		{"twin: the same case, and one of a type", gateManifest + `
-- server.js --
const stars = require("./routes/Stars");
require("express")().get("/", stars).listen(process.env.PORT || 3000);
-- routes/Stars.js --
module.exports = (q, r) => r.send("up");
`, nil},
		{"what git has is another name than the disk's", gateManifest + `
-- server.js --
const stars = require("./routes/stars");
require("express")().get("/", stars).listen(process.env.PORT || 3000);
-- Routes/stars.js gone --
module.exports = (q, r) => r.send("up");
-- routes/stars.js untracked --
module.exports = (q, r) => r.send("up");
`, []string{"ship/case server.js:1 pushed=blocker"}},
		{"a module of Python", pythonTree + `
-- .python-version --
3.14
-- app.py --
from flask import Flask
from Models.night import Night
app = Flask(__name__)
@app.get("/")
def home():
    return Night.NAME
-- models/__init__.py --
-- models/night.py --
class Night:
    NAME = "clear"
`, []string{"ship/case app.py:2 pushed=blocker"}},
		{"twin: a package that is declared", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
pycryptodome==3.23.0
-- Procfile --
web: gunicorn app:app
-- .python-version --
3.14
-- app.py --
from flask import Flask
from Crypto.Cipher import AES
app = Flask(__name__)
@app.get("/")
def home():
    return str(AES.block_size)
-- crypto/__init__.py --
-- crypto/cipher.py --
X = 1
`, nil},
		{"a path that the container copies", gateManifest + server + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY Package.json ./
COPY server.js ./
RUN npm install
EXPOSE 3000
CMD ["node", "server.js"]
`, []string{"ship/case Dockerfile:3 image=blocker"}},
	})
}

func TestShipLineEndings(t *testing.T) {
	t.Parallel()
	const script = "\n-- Procfile --\nweb: ./start.sh\n-- start.sh exec --\n#!/bin/sh\r\nexec node server.js\r\n"
	const lf = `
-- Procfile --
web: ./start.sh
-- start.sh exec --
#!/bin/sh
exec node server.js
`
	runCases(t, []ruleCase{
		{"a script that the start runs", gateManifest + server + script, []string{"ship/line-endings start.sh:1 pushed=blocker"}},
		{"tracked, and nothing turns them", gateManifest + server + script + "-- .git --\n", []string{"ship/line-endings start.sh:1 pushed=blocker"}},
		{"twin: git turns them on the way", gateManifest + server + script + `-- .gitattributes --
* text=auto
-- .git --
`, nil},
		{"twin: only for scripts", gateManifest + server + script + `-- .gitattributes --
*.sh text eol=lf
-- .git --
`, nil},
		{"twin: line feeds", gateManifest + server + lf, nil},
		{"an attribute that puts them in", gateManifest + server + lf + `-- .gitattributes --
*.sh text eol=crlf
-- .git --
`, []string{"ship/line-endings start.sh:1 pushed=blocker"}},
		{"twin: code does not mind", gateManifest + "-- server.js --\r\nrequire(\"express\")().listen(process.env.PORT || 3000);\r\n", nil},
	})
}

func TestShipOutside(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a package from a folder above", nodeTree(`"engines": { "node": "24.x" },
  "optionalDependencies": { "stars": "file:../../stars" },`), []string{"ship/outside package.json:5 pushed=blocker"}},
		{"twin: a folder of the tree", nodeTree(`"engines": { "node": "24.x" },
  "optionalDependencies": { "stars": "file:stars" },`) + `
-- stars/package.json --
{ "name": "stars", "version": "1.0.0" }
`, nil},
		{"a requirement beside the tree", `
-- requirements.txt --
flask==3.1.2
gunicorn==23.0.0
-e ../starlib
-- Procfile --
web: gunicorn app:app
-- .python-version --
3.14
` + flaskApp, []string{"ship/outside requirements.txt:3 pushed=blocker"}},
		{"a container that copies from above", gateManifest + server + `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY ../shared ./shared
COPY . .
RUN npm ci
EXPOSE 3000
CMD ["node", "server.js"]
`, []string{"ship/outside Dockerfile:3 image=blocker"}},
	})
}

func TestShipAbsolutePath(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a home folder", gateManifest + `
-- server.js --
const stars = require("fs").readFileSync("/Users/mira/observatory/stars.csv", "utf8");
require("express")().get("/", (q, r) => r.send(stars)).listen(process.env.PORT || 3000);
`, []string{"ship/absolute-path server.js:1 pushed=risk"}},
		{"a drive", gateManifest + `
-- server.js --
const stars = require("fs").readFileSync("C:\\Users\\mira\\stars.csv", "utf8");
require("express")().get("/", (q, r) => r.send(stars)).listen(process.env.PORT || 3000);
`, []string{"ship/absolute-path server.js:1 pushed=risk"}},
		{"twin: routes, and the folder of the container", gateManifest + `
-- server.js --
const fs = require("fs");
// const old = "/Users/mira/observatory/stars.csv";
const app = require("express")();
app.get("/home/nights", (q, r) => r.send("up"));
app.get("/Users/:name/nights", (q, r) => r.send(fs.existsSync("/home/node/app/stars.csv")));
app.get("/Users/list/all", (q, r) => r.send("C:"));
app.listen(process.env.PORT || 3000);
`, nil},
		{"a setting of Python", pythonTree + `
-- .python-version --
3.14
-- app.py --
from flask import Flask
app = Flask(__name__)
DATABASE = "sqlite:////Users/mira/Documents/nights.db"
@app.get("/")
def home():
    return DATABASE
if __name__ == "__main__":
    app.run()
`, []string{"ship/absolute-path app.py:3 pushed=risk"}},
	})
}

func TestShipLarge(t *testing.T) {
	t.Parallel()
	dir := plant(t, gateManifest+server)
	big, err := os.Create(filepath.Join(dir, "sky.bin"))
	if err != nil {
		t.Fatal(err)
	}
	if err := big.Truncate(51 << 20); err != nil {
		t.Skip("the file system has no sparse files")
	}
	big.Close()
	// Nothing is tracked: a host that takes git's files gets none of it.
	if got := len(run(t, dir, nil).Findings); got != 1 {
		t.Errorf("a file of 51 MB gives %d findings", got)
	}
}

func TestContextIgnoreFiles(t *testing.T) {
	t.Parallel()
	const image = `
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY package.json ./
COPY . .
RUN npm install
EXPOSE 3000
CMD ["node", "server.js"]
`
	runCases(t, []ruleCase{
		{"a file that is copied by name is kept out", gateManifest + server + image + `
-- .dockerignore --
node_modules
*.json
`, []string{"ship/ignored Dockerfile:3 image=blocker"}},
		{"twin: taken in again", gateManifest + server + image + `
-- .dockerignore --
*
!package.json
!server.js
`, nil},
		{"twin: the file of one container file takes the place of the folder's", gateManifest + server + image + `
-- .dockerignore --
*.json
-- Dockerfile.dockerignore --
node_modules
`, nil},
	})
}

func TestShipDependenciesOfOtherEcosystems(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"Composer's packages", `-- composer.json --
{ "require": { "php": "~8.4.0" } }
-- public/index.php --
<?php
-- vendor/autoload.php --
<?php
-- vendor/slim/slim/App.php --
<?php
-- .git --
`, []string{"ship/dependencies vendor pushed=risk"}},
		{"twin: Go's are meant to be there", `-- go.mod --
module hill.test/gate

go 1.25
-- main.go --
package main

func main() {}
-- vendor/modules.txt --
-- .git --
`, nil},
		{"what Cargo compiled", `-- Cargo.toml --
[package]
name = "gate"
rust-version = "1.80"
-- src/main.rs --
fn main() {}
-- target/.rustc_info.json --
{}
-- .git --
`, []string{"ship/dependencies target pushed=risk"}},
	})
}

func TestWorkflowsAtTheRoot(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a pipeline of any maker", pythonTree + `-- .python-version --
3.14
-- pipeline.yml --
stages:
  - test
test:
  image: python:3.12-slim
  script: [pytest]
`, []string{"pin/disagree pipeline.yml:4 pushed=risk"}},
		{"twin: another file with an image", pythonTree + `-- .python-version --
3.14
-- stars.yml --
image: python:3.12-slim
commands: none
`, nil},
	})
}
