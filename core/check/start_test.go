package check_test

import (
	"strings"
	"testing"
)

// flaskApp is a sound Flask module.
const flaskApp = `
-- app.py --
from flask import Flask

app = Flask(__name__)


@app.get("/")
def tonight():
    return "clear"
`

// server is a sound Express server.
const server = `
-- server.js --
const app = require("express")();
app.get("/", (req, res) => res.send("clear"));
app.listen(process.env.PORT || 3000);
`

func TestStartMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a manifest without a start script", `
-- package.json --
{
  "name": "catalogue",
  "engines": { "node": "24.x" },
  "main": "app.js",
  "dependencies": { "express": "5.1.0" }
}
-- app.js --
require("express")().listen(process.env.PORT || 3000);
`, []string{"start/missing package.json:1 pushed=blocker"}},
		{"twin: server.js is npm's own default", `
-- package.json --
{
  "name": "catalogue",
  "engines": { "node": "24.x" },
  "dependencies": { "express": "5.1.0" }
}` + server, nil},
		{"Python has no command that every host runs", flaskManifest + flaskApp,
			[]string{"start/missing requirements.txt:1 pushed=blocker"}},
		{"twin: a process file", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn app:app
`, nil},
		{"a container file without a command", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn app:app
-- Dockerfile --
FROM python:3.13-slim
COPY . .
RUN pip install -r requirements.txt
`, []string{"start/missing Dockerfile:1 image=blocker"}},
		{"twin: the container file is the way this goes", flaskManifest + flaskApp + `
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
CMD ["gunicorn", "--bind", "0.0.0.0:8000", "app:app"]
`, nil},
		{"a script that is not there", `
-- package.json --
{
  "name": "catalogue",
  "engines": { "node": "24.x" },
  "scripts": { "start": "npm run serve" },
  "dependencies": { "express": "5.1.0" }
}` + server, []string{"start/missing package.json:4 pushed=blocker"}},
		{"twin: a script of the tree has the name of a known program", `
-- package.json --
{
  "name": "catalogue",
  "engines": { "node": "24.x" },
  "scripts": { "start": "./bin/serve --quiet" },
  "dependencies": { "express": "5.1.0" }
}
-- bin/serve exec --
#!/bin/sh
export PORT="${PORT:-3000}"
exec node server.js "$@"` + server + `
-- lib/names.js --
module.exports = require("..").name;
-- lib/up/index.js --
module.exports = require("../names");
-- index.js --
exports.name = "catalogue";
require("./lib/up");
`, nil},
		{"twin: the script is there", `
-- package.json --
{
  "name": "catalogue",
  "engines": { "node": "24.x" },
  "scripts": { "start": "npm run serve", "serve": "node server.js" },
  "dependencies": { "express": "5.1.0" }
}` + server, nil},
	})
}

func TestStartWebMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"only a worker", nodeManifest + server + `
-- Procfile --
worker: node server.js
`, []string{"start/web-missing Procfile:1 pushed=blocker"}},
		{"a capital letter", nodeManifest + server + `
-- Procfile --
# the processes of the bookings
release: node migrate.js
Web: node server.js
-- migrate.js --
console.log("nothing to do");
`, []string{"start/web-missing Procfile:3 pushed=blocker"}},
		{"twin: web among others", nodeManifest + server + `
-- Procfile --
worker: node worker.js
web: node server.js
-- worker.js --
setInterval(() => {}, 1000);
`, nil},
	})
}

func TestStartDevServer(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"flask run", flaskManifest + flaskApp + `
-- Procfile --
web: flask run --host 0.0.0.0 --port $PORT
`, []string{"start/dev-server Procfile:1 pushed=risk"}},
		{"flask run on its default", flaskManifest + flaskApp + `
-- Procfile --
web: flask run
`, []string{"start/dev-server Procfile:1 pushed=blocker"}},
		{"app.run under the main guard", flaskManifest + `
-- Procfile --
web: python app.py
-- app.py --
import os
from flask import Flask

app = Flask(__name__)

if __name__ == "__main__":
    app.run(host="0.0.0.0", port=int(os.environ.get("PORT", 5000)))
`, []string{"start/dev-server Procfile:1 pushed=risk"}},
		{"twin: gunicorn imports the same file", flaskManifest + `
-- Procfile --
web: gunicorn app:app
-- app.py --
import os
from flask import Flask

app = Flask(__name__)

if __name__ == "__main__":
    app.run(debug=True, port=int(os.environ.get("PORT", 5000)))
`, nil},
		{"Django's runserver", `
-- requirements.txt --
django==5.2.8
-- .python-version --
3.13
-- Procfile --
web: python manage.py runserver 0.0.0.0:$PORT
` + djangoSite(`DEBUG = False
ALLOWED_HOSTS = ["hill.example"]`), []string{"start/dev-server Procfile:1 pushed=risk"}},
		{"vite serves the development build", `
-- package.json --
{
  "name": "starmap",
  "engines": { "node": "24.x" },
  "scripts": { "start": "vite --host --port $PORT" },
  "dependencies": { "vite": "7.1.12" }
}
-- index.html --
<p>stars</p>
`, []string{"start/dev-server package.json:4 pushed=risk"}},
		{"twin: a production server starts, vite builds", `
-- package.json --
{
  "name": "starmap",
  "engines": { "node": "24.x" },
  "scripts": { "build": "vite build", "dev": "vite", "start": "node server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "vite": "7.1.12" }
}` + server, nil},
		{"next dev", `
-- package.json --
{
  "name": "visitors",
  "engines": { "node": "24.x" },
  "scripts": { "dev": "next dev", "build": "next build", "start": "next dev -p $PORT" },
  "dependencies": { "next": "16.0.1", "react": "19.2.0", "react-dom": "19.2.0" }
}
`, []string{"start/dev-server package.json:4 pushed=risk"}},
		{"twin: next start", `
-- package.json --
{
  "name": "visitors",
  "engines": { "node": "24.x" },
  "scripts": { "dev": "next dev", "build": "next build", "start": "next start" },
  "dependencies": { "next": "16.0.1", "react": "19.2.0", "react-dom": "19.2.0" }
}
`, nil},
	})
}

func TestStartReload(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"nodemon, declared to run", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "nodemon server.js" },
  "dependencies": { "express": "5.1.0", "nodemon": "3.1.10" }
}` + server, []string{"start/reload package.json:4 pushed=risk"}},
		{"node --watch", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node --watch server.js" },
  "dependencies": { "express": "5.1.0" }
}` + server, []string{"start/reload package.json:4 pushed=risk"}},
		{"twin: only the script for development watches", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "dev": "nodemon server.js", "start": "node server.js --watch-sky" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "nodemon": "3.1.10" }
}` + server, nil},
		{"uvicorn --reload", flaskManifest + `
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $PORT --reload
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, []string{"start/reload Procfile:1 pushed=risk"}},
		{"reload=True in the code", flaskManifest + `
-- Procfile --
web: python app.py
-- app.py --
import os
import uvicorn
from fastapi import FastAPI
app = FastAPI()
if __name__ == "__main__":
    uvicorn.run("app:app", host="0.0.0.0", port=int(os.environ.get("PORT", 8000)), reload=True)
`, []string{"start/reload app.py:6 pushed=risk"}},
		{"twin: reload where the environment says so", flaskManifest + `
-- Procfile --
web: python app.py
-- app.py --
import os
import uvicorn
from fastapi import FastAPI
app = FastAPI()
if __name__ == "__main__":
    uvicorn.run("app:app", host="0.0.0.0", port=int(os.environ.get("PORT", 8000)), reload=os.environ.get("RELOAD") == "1")
`, nil},
	})
}

func TestStartTargetMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"the file has another name", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node index.js" },
  "dependencies": { "express": "5.1.0" }
}` + server, []string{"start/target-missing package.json:4 pushed=blocker"}},
		{"twin: node adds the extension, and finds an index", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node src" },
  "dependencies": { "express": "5.1.0" }
}
-- src/index.js --
require("express")().listen(process.env.PORT || 3000);
`, nil},
		{"a letter's case", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node Server.js" },
  "dependencies": { "express": "5.1.0" }
}` + server, []string{"ship/case package.json:4 pushed=blocker"}},
		{"a module of a sample", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn hello.wsgi:application
`, []string{"start/target-missing Procfile:1 pushed=blocker"}},
		{"twin: a package below a folder that the command enters", flaskManifest + `
-- Procfile --
web: cd src && gunicorn dome.web:app
-- src/dome/__init__.py --
-- src/dome/web.py --
from flask import Flask
app = Flask(__name__)
`, nil},
		{"twin: what the build makes", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "build": "tsc", "start": "node dist/server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "typescript": "5.9.3" }
}
-- tsconfig.json --
{ "compilerOptions": { "outDir": "dist", "rootDir": "src" } }
-- src/server.ts --
import express from "express";
express().listen(process.env.PORT || 3000);
`, nil},
		{"a script of the shell that is not there", nodeManifest + server + `
-- Procfile --
web: ./bin/start.sh
`, []string{"start/target-missing Procfile:1 pushed=blocker"}},
	})
}

func TestStartImportMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"a file that is nowhere", nodeManifest + `
-- server.js --
const app = require("express")();
const routes = require("./routes/stars");
app.use(routes);
app.listen(process.env.PORT || 3000);
-- routes/star.js --
module.exports = (req, res, next) => next();
`, []string{"start/import-missing server.js:2 pushed=blocker"}},
		{"twin: TypeScript names the output", `
-- package.json --
{
  "name": "bookings",
  "type": "module",
  "engines": { "node": "24.x" },
  "scripts": { "start": "tsx server.ts" },
  "dependencies": { "express": "5.1.0", "tsx": "4.20.6" }
}
-- server.ts --
import express from "express";
import { stars } from "./stars.js";
import type { Star } from "./types";
express().listen(process.env.PORT || 3000, () => console.log(stars));
-- stars.ts --
export const stars: number = 5;
`, nil},
		{"a relative import in Python", flaskManifest + `
-- Procfile --
web: gunicorn dome.web:app
-- dome/__init__.py --
-- dome/web.py --
from flask import Flask
from .settings import load
app = Flask(__name__)
load(app)
`, []string{"start/import-missing dome/web.py:2 pushed=blocker"}},
		{"twin: the import may fail", nodeManifest + `
-- server.js --
let extra = null;
try {
  extra = require("./local-settings");
} catch {
  // nothing to add
}
const app = require("express")();
app.listen(process.env.PORT || 3000);
`, nil},
		{"twin: made by a build, and an alias of TypeScript", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "build": "tsc", "start": "node dist/server.js" },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "typescript": "5.9.3" }
}
-- tsconfig.json --
{ // comments are allowed here
  "compilerOptions": { "outDir": "./dist", "rootDir": "./src", "baseUrl": ".", "paths": { "@sky/*": ["src/sky/*"] }, },
}
-- src/server.ts --
import express from "express";
import { clear } from "@sky/seeing";
import { Client } from "./generated/client";
express().listen(process.env.PORT || 3000, () => console.log(clear, Client));
-- src/sky/seeing.ts --
export const clear = true;
`, nil},
	})
}

func TestStartCallableMissing(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"the object has another name", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn app:application
`, []string{"start/callable-missing Procfile:1 pushed=blocker"}},
		{"gunicorn looks for application where none is named", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn app
`, []string{"start/callable-missing Procfile:1 pushed=blocker"}},
		{"twin: a factory", flaskManifest + `
-- Procfile --
web: gunicorn "dome:create_app('production')"
-- dome/__init__.py --
from flask import Flask

def create_app(name="development"):
    return Flask(__name__)
`, nil},
		{"twin: imported into the module", flaskManifest + `
-- Procfile --
web: gunicorn wsgi:app
-- wsgi.py --
from dome import app
-- dome/__init__.py --
from .factory import make
app = make()
-- dome/factory.py --
from flask import Flask
def make():
    return Flask("dome")
`, nil},
		{"twin: taken with a star, and made under a condition", flaskManifest + `
-- Procfile --
web: uvicorn wsgi:app --host 0.0.0.0 --port $PORT
-- wsgi.py --
import os
if os.environ.get("TRACE"):
    from traced import *
else:
    from plain import *
-- plain.py --
from fastapi import FastAPI
app = FastAPI()
-- traced.py --
from fastapi import FastAPI
app = FastAPI(debug=False)
`, nil},
		{"a name that only a function knows", flaskManifest + `
-- Procfile --
web: gunicorn wsgi:app
-- wsgi.py --
from flask import Flask

def make():
    app = Flask(__name__)
    return app
`, []string{"start/callable-missing Procfile:1 pushed=blocker"}},
	})
}

func TestStartProgramUndeclared(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"gunicorn is not in the requirements", `
-- requirements.txt --
flask==3.1.2
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, []string{"start/program-undeclared Procfile:1 pushed=blocker"}},
		{"twin: an extra brings uvicorn", `
-- requirements.txt --
fastapi[standard]==0.121.0
-- .python-version --
3.13
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $PORT
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, nil},
		{"twin: in a file that the requirements name", `
-- requirements.txt --
-r requirements/production.txt
-- requirements/base.txt --
flask==3.1.2
-- requirements/production.txt --
-r base.txt
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn app:app
` + flaskApp, nil},
		{"tsx is nowhere declared", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "tsx server.ts" },
  "dependencies": { "express": "5.1.0" }
}
-- server.ts --
import express from "express";
express().listen(process.env.PORT || 3000);
`, []string{"start/program-undeclared package.json:4 pushed=blocker"}},
		{"twin: npx fetches what is not there", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "npx tsx server.ts" },
  "dependencies": { "express": "5.1.0" }
}
-- server.ts --
import express from "express";
express().listen(process.env.PORT || 3000);
`, nil},
		{"twin: the container installs it by hand", `
-- requirements.txt --
flask==3.1.2
-- .python-version --
3.13
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt gunicorn
EXPOSE 8000
CMD ["gunicorn", "-b", "0.0.0.0:8000", "app:app"]
-- Procfile --
web: python -m flask run -h 0.0.0.0 -p $PORT
` + flaskApp, []string{"start/dev-server Procfile:1 pushed=risk"}},
		{"cross-env around the program", `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "cross-env NODE_ENV=production node server.js" },
  "dependencies": { "express": "5.1.0" }
}` + server, []string{"start/program-undeclared package.json:4 pushed=blocker"}},
	})
}

func TestStartDisagree(t *testing.T) {
	t.Parallel()
	const manifest = `
-- package.json --
{
  "name": "bookings",
  "engines": { "node": "24.x" },
  "scripts": { "start": "node server.js" },
  "dependencies": { "express": "5.1.0" }
}
-- app.js --
require("express")().listen(process.env.PORT || 3000);
` + server
	runCases(t, []ruleCase{
		{"process file against package script", manifest + `
-- Procfile --
web: node app.js
`, []string{"start/disagree Procfile:1 pushed=risk"}},
		{"twin: the same by another way", manifest + `
-- Procfile --
web: npm start
`, nil},
		{"the odd one of three", manifest + `
-- Procfile --
web: node server.js
-- Dockerfile --
FROM node:24-slim
WORKDIR /app
COPY . .
RUN npm ci
EXPOSE 3000
CMD ["node", "app.js"]
`, []string{"start/disagree Dockerfile:6 pushed=risk image=risk"}},
		{"twin: a factory and a file of the same application", flaskManifest + flaskApp + `
-- Procfile --
web: gunicorn app:app
-- Dockerfile --
FROM python:3.13-slim
WORKDIR /srv
COPY . .
RUN pip install -r requirements.txt
EXPOSE 8000
CMD ["gunicorn", "-b", "0.0.0.0:8000", "app:app"]
`, nil},
	})
}

func TestMessagesHoldTheNamesOfTheTree(t *testing.T) {
	t.Parallel()
	r := run(t, plant(t, flaskManifest+`
-- Procfile --
web: gunicorn dome.web:application
-- dome/__init__.py --
-- dome/web.py --
from flask import Flask
telescope = Flask(__name__)
`), nil)
	f := finding(t, r, "start/callable-missing")
	for _, want := range []string{"dome/web.py", "application", "telescope"} {
		if !strings.Contains(f.Message, want) {
			t.Errorf("the message does not say %s: %s", want, f.Message)
		}
	}
	if f.Remedy != "dome.web:telescope" {
		t.Errorf("the remedy is %q", f.Remedy)
	}
}

func TestACallOfNothing(t *testing.T) {
	t.Parallel()
	r := run(t, plant(t, nodeManifest+`
-- server.js --
const app = new =Express(); require("express")().listen(process.env.PORT || 3000);
`), nil)
	for _, u := range r.Unknown {
		if strings.Contains(u.Reason, "fault") {
			t.Error(u.Reason)
		}
	}
}
