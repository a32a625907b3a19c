package check_test

import "testing"

// image is a sound container file for the server of nodeManifest, without its
// last line.
const imageHead = `
-- .dockerignore --
node_modules
-- Dockerfile --
FROM node:24-slim
WORKDIR /srv
COPY package.json ./
RUN npm install --omit=dev
COPY . .
EXPOSE 3000
`

func TestStartSignal(t *testing.T) {
	t.Parallel()
	tree := nodeManifest + server + imageHead
	runCases(t, []ruleCase{
		{"a package manager", tree + "CMD [\"npm\", \"start\"]\n", []string{"start/signal Dockerfile:7 image=risk"}},
		{"a shell with two commands", tree + "CMD node -v && node server.js\n", []string{"start/signal Dockerfile:7 image=risk"}},
		{"a script without exec", tree + `CMD ["sh", "run.sh"]
-- run.sh --
#!/bin/sh
set -e
node server.js
`, []string{"start/signal run.sh:3 image=risk"}},
		{"twin: the last one is entered", tree + "CMD node -v && exec node server.js\n", nil},
		{"twin: one command", tree + "CMD node server.js\n", nil},
		{"twin: a script with exec", tree + `CMD ["sh", "run.sh"]
-- run.sh --
#!/bin/sh
set -e
exec node server.js
`, nil},
		{"twin: an init process hands signals on", tree + "ENTRYPOINT [\"tini\", \"--\"]\nCMD [\"npm\", \"start\"]\n", nil},
		{"twin: not a container", nodeManifest + server + "-- Procfile --\nweb: npm start\n", nil},
	})
}

func TestStartBackground(t *testing.T) {
	t.Parallel()
	web := func(command string) string {
		return flaskManifest + flaskApp + "-- Procfile --\nweb: " + command + "\n"
	}
	node := func(command string) string { return nodeManifest + server + "-- Procfile --\nweb: " + command + "\n" }
	runCases(t, []ruleCase{
		{"a flag", web("gunicorn --daemon app:app"), []string{"start/background Procfile:1 pushed=blocker"}},
		{"an ampersand", node("node server.js &"), []string{"start/background Procfile:1 pushed=blocker"}},
		{"nohup", node("nohup node server.js > log.txt 2>&1 &"), []string{"start/background Procfile:1 pushed=blocker"}},
		{"twin: something waits", node("node server.js & wait"), nil},
		{"twin: the other one is in the background", node("node -v & exec node server.js"), nil},
		{"twin: in the foreground", web("gunicorn app:app"), nil},
		{"a process manager", "-- package.json --\n{ \"name\": \"gate\", \"engines\": { \"node\": \"24.x\" }, \"scripts\": { \"start\": \"pm2 start server.js\" }, \"dependencies\": { \"express\": \"5.1.0\", \"pm2\": \"6.0.13\" } }" + server, []string{"start/background package.json:1 pushed=blocker"}},
		{"twin: the one that stays", "-- package.json --\n{ \"name\": \"gate\", \"engines\": { \"node\": \"24.x\" }, \"scripts\": { \"start\": \"pm2-runtime server.js\" }, \"dependencies\": { \"express\": \"5.1.0\", \"pm2\": \"6.0.13\" } }" + server, nil},
		{"twin: held in the foreground", "-- package.json --\n{ \"name\": \"gate\", \"engines\": { \"node\": \"24.x\" }, \"scripts\": { \"start\": \"pm2 start server.js --no-daemon\" }, \"dependencies\": { \"express\": \"5.1.0\", \"pm2\": \"6.0.13\" } }" + server, nil},
		{"nginx by itself", `-- index.html --
<p>clear</p>
-- Dockerfile --
FROM nginx:1.29
COPY . /usr/share/nginx/html
EXPOSE 80
CMD ["nginx"]
`, []string{"start/background Dockerfile:4 image=blocker"}},
		{"twin: nginx that stays", `-- index.html --
<p>clear</p>
-- Dockerfile --
FROM nginx:1.29
COPY . /usr/share/nginx/html
EXPOSE 80
CMD ["nginx", "-g", "daemon off;"]
`, nil},
	})
}

func TestStartNotExecutable(t *testing.T) {
	t.Parallel()
	script := "#!/bin/sh\nexec node server.js\n"
	runCases(t, []ruleCase{
		{"no execute bit on the disk", nodeManifest + server + `-- Procfile --
web: ./run.sh
-- run.sh --
` + script, []string{"start/not-executable run.sh:1 pushed=blocker"}},
		{"no execute bit in git", nodeManifest + server + `-- Procfile --
web: bin/run
-- bin/run --
` + script + "-- .git --\n", []string{"start/not-executable bin/run:1 pushed=blocker"}},
		{"twin: it has one", nodeManifest + server + `-- Procfile --
web: ./run.sh
-- run.sh exec --
` + script, nil},
		{"twin: a shell reads it", nodeManifest + server + `-- Procfile --
web: sh run.sh
-- run.sh --
` + script, nil},
		{"no interpreter, and no shell", nodeManifest + server + imageHead + `CMD ["./run.sh"]
-- run.sh exec --
exec node server.js
`, []string{"start/not-executable run.sh:1 image=blocker"}},
		{"twin: the image sets the bit", nodeManifest + server + imageHead + `RUN chmod +x run.sh
CMD ["./run.sh"]
-- run.sh --
` + script, nil},
		{"twin: the copy sets it", nodeManifest + server + `-- .dockerignore --
node_modules
-- Dockerfile --
FROM node:24-slim
WORKDIR /srv
COPY . .
COPY --chmod=755 run.sh ./
RUN npm install --omit=dev
EXPOSE 3000
CMD ["./run.sh"]
-- run.sh --
` + script, nil},
	})
}

func TestStartReleaseUnsafe(t *testing.T) {
	t.Parallel()
	release := func(command string) string {
		return `-- requirements.txt --
django==5.2.8
gunicorn==23.0.0
-- .python-version --
3.13
-- manage.py --
import os
from django.core.management import execute_from_command_line
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings")
execute_from_command_line()
-- hill/__init__.py --
-- hill/settings.py --
import os
SECRET_KEY = os.environ["SECRET_KEY"]
ALLOWED_HOSTS = ["hill.example"]
-- hill/wsgi.py --
from django.core.wsgi import get_wsgi_application
application = get_wsgi_application()
-- Procfile --
release: ` + command + "\nweb: gunicorn hill.wsgi\n"
	}
	runCases(t, []ruleCase{
		{"migrations are generated", release("python manage.py makemigrations && python manage.py migrate"), []string{"start/release-unsafe Procfile:1 pushed=risk"}},
		{"a question", release("python manage.py collectstatic"), []string{"start/release-unsafe Procfile:1 pushed=risk"}},
		{"twin: migrations are applied", release("python manage.py migrate --noinput && python manage.py collectstatic --noinput"), nil},
		{"twin: only a look whether any are missing", release("python manage.py makemigrations --check --dry-run"), nil},
	})
}

func TestStartRunsOnImport(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"outside of any guard", flaskManifest + `-- app.py --
from flask import Flask

app = Flask(__name__)

app.run(port=5000)
-- Procfile --
web: gunicorn app:app
`, []string{"start/runs-on-import app.py:5 pushed=blocker"}},
		{"twin: under the main module", flaskManifest + `-- app.py --
from flask import Flask

app = Flask(__name__)

if __name__ == "__main__":
    app.run(port=5000)
-- Procfile --
web: gunicorn app:app
`, nil},
		{"twin: in a function", flaskManifest + `-- app.py --
from flask import Flask

app = Flask(__name__)


def main():
    app.run(port=5000)
-- Procfile --
web: gunicorn app:app
`, nil},
	})
}

func TestStartArtefact(t *testing.T) {
	t.Parallel()
	pom := func(plugin string) string {
		return `-- pom.xml --
<project>
  <groupId>hill</groupId>
  <artifactId>gate</artifactId>
  <version>1.2.0</version>
  <properties><maven.compiler.release>21</maven.compiler.release></properties>
  <dependencies><dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId><version>6.7.0</version></dependency></dependencies>
  <build><plugins>` + plugin + `</plugins></build>
</project>
-- src/main/java/hill/Gate.java --
package hill;
public class Gate { public static void main(String[] a) { } }
`
	}
	const shade = "<plugin><artifactId>maven-shade-plugin</artifactId><version>3.6.1</version></plugin>"
	const assembly = "<plugin><artifactId>maven-assembly-plugin</artifactId><version>3.7.1</version></plugin>"
	runCases(t, []ruleCase{
		{"a jar of its own classes only", pom("") + "-- Procfile --\nweb: java -jar target/gate-1.2.0.jar\n", []string{"start/artefact Procfile:1 pushed=blocker"}},
		{"the thin one beside the one that holds everything", pom(assembly) + "-- Procfile --\nweb: java -jar target/gate-1.2.0.jar\n", []string{"start/artefact Procfile:1 pushed=blocker"}},
		{"twin: one jar that holds everything", pom(shade) + "-- Procfile --\nweb: java -jar target/gate-1.2.0.jar\n", nil},
		{"twin: a star for the version", pom(shade) + "-- Procfile --\nweb: java -jar target/gate-*.jar\n", nil},
		{"the build makes another name", pom(shade) + "-- Procfile --\nweb: java -jar target/gate-1.1.0.jar\n", []string{"start/target-missing Procfile:1 pushed=blocker"}},
	})
}

func TestStartPermission(t *testing.T) {
	t.Parallel()
	deno := func(start, code string) string {
		return `-- deno.json --
{
  "tasks": {
    "start": "` + start + `"
  }
}
-- .tool-versions --
deno 2.5.6
-- main.ts --
` + code
	}
	const code = "const port = Number(Deno.env.get(\"PORT\") ?? 8000);\nDeno.serve({ port }, () => new Response(\"clear\"));\n"
	runCases(t, []ruleCase{
		{"nothing is granted", deno("deno run main.ts", code), []string{"start/permission deno.json:3 pushed=blocker", "start/permission deno.json:3 pushed=blocker"}},
		{"not the environment", deno("deno run --allow-net main.ts", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"another variable", deno("deno run --allow-net --allow-env=HOST main.ts", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"flags after the file", deno("deno run --allow-net main.ts --allow-env", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"files that are read", deno("deno run -NE main.ts", "const page = await Deno.readTextFile(\"index.html\");\n"+code), []string{"start/permission deno.json:3 pushed=risk"}},
		{"another port", deno("deno run --allow-net=0.0.0.0:8000 --allow-env main.ts", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"twin: any port of that interface", deno("deno run --allow-net=0.0.0.0 --allow-env=P* main.ts", code), nil},
		{"twin: what is needed", deno("deno run --allow-net --allow-env=PORT main.ts", code), nil},
		{"twin: everything", deno("deno run -A main.ts", code), nil},
	})
}

func TestStartBuildMissing(t *testing.T) {
	t.Parallel()
	manifest := func(scripts string) string {
		return `-- package.json --
{
  "name": "gate",
  "engines": { "node": "24.x" },
  "scripts": { ` + scripts + ` },
  "dependencies": { "express": "5.1.0" },
  "devDependencies": { "typescript": "5.9.3" }
}
-- tsconfig.json --
{ "compilerOptions": { "outDir": "dist", "rootDir": "src" } }
-- src/server.ts --
import express from "express";
express().listen(process.env.PORT || 3000);
`
	}
	const image = `-- .dockerignore --
node_modules
dist
-- Dockerfile --
FROM node:24-slim
WORKDIR /srv
COPY . .
RUN npm ci
`
	runCases(t, []ruleCase{
		{"a step that hosts do not run", manifest(`"compile": "tsc", "start": "node dist/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"no step at all", manifest(`"start": "node dist/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"a framework that must be built", `-- package.json --
{
  "engines": { "node": "24.x" },
  "scripts": { "start": "next start -p $PORT" },
  "dependencies": { "next": "16.0.1", "react": "19.2.0", "react-dom": "19.2.0" }
}
-- pages/index.js --
export default function Page() { return null; }
`, []string{"start/build-missing package.json:3 pushed=blocker"}},
		{"no step of the image builds", manifest(`"build": "tsc", "start": "node dist/server.js"`) + image + "EXPOSE 3000\nCMD [\"node\", \"dist/server.js\"]\n", []string{"start/build-missing Dockerfile:6 image=blocker"}},
		{"the compiler writes elsewhere", manifest(`"build": "rimraf build && tsc", "start": "node build/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"the build script says where", manifest(`"build": "tsc --outDir lib", "start": "node dist/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"twin: the build script says where", manifest(`"build": "tsc -p . --outDir build", "start": "node build/server.js"`), nil},
		{"twin: something moves what was made", manifest(`"build": "tsc && cp -r dist build", "start": "node build/server.js"`), nil},
		{"twin: another step moves it", manifest(`"build": "tsc", "postbuild": "mv dist build", "start": "node build/server.js"`), nil},
		{"twin: the build script makes it", manifest(`"build": "tsc", "start": "node dist/server.js"`), nil},
		{"before each start, when the compiler is gone", manifest(`"prestart": "tsc", "start": "node dist/server.js"`), []string{"manifest/dev-only package.json:6 pushed=blocker"}},
		{"twin: the image builds", manifest(`"build": "tsc", "start": "node dist/server.js"`) + image + `RUN npm run build
EXPOSE 3000
CMD ["node", "dist/server.js"]
`, nil},
	})
}

// TestTargetsOfMake starts what a target of make runs: the names of targets are no
// programs, and what the file sets stands in its recipe.
func TestTargetsOfMake(t *testing.T) {
	t.Parallel()
	tree := func(vars, recipe string) string {
		return `-- Procfile --
web: make serve
-- .python-version --
3.13
-- requirements.txt --
gunicorn==23.0.0
-- app.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"clear"]
-- Makefile --
` + vars + "\nserve:\n\t" + recipe + "\n"
	}
	runCases(t, []ruleCase{
		{"loopback by a variable of the file", tree("BIND = 127.0.0.1:$(PORT)", "@gunicorn app:app --bind $(BIND)"), []string{"port/loopback Makefile:3 pushed=blocker"}},
		{"a fixed port", tree("PORT := 8000", "gunicorn app:app --bind 0.0.0.0:$(PORT)"), []string{"port/literal Makefile:3 pushed=blocker"}},
		{"no such module", tree("", "gunicorn hill:app --bind 0.0.0.0:$(PORT)"), []string{"start/target-missing Makefile:3 pushed=blocker"}},
		{"twin: a variable that the environment may set", tree("HOST ?= 0.0.0.0", "@exec gunicorn app:app --bind $(HOST):$(PORT)"), nil},
		{"twin: one of the shell", tree("", "exec gunicorn app:app --bind 0.0.0.0:$${PORT:-8000}"), nil},
		{"what an included file sets", tree("include .env", "gunicorn app:app --bind $(HOST):$(PORT)") + "-- .env --\nHOST=127.0.0.1\n", []string{"port/loopback Makefile:3 pushed=blocker"}},
		{"twin: an included file that is not there", tree("-include local.mk", "gunicorn app:app --bind $(HOST):$(PORT)"), nil},
		{"twin: a condition of make that is not followed", tree("ifdef DEV\nHOST = 127.0.0.1\nelse\nHOST = 0.0.0.0\nendif", "gunicorn app:app --bind $(HOST):$(PORT)"), nil},
	})
}
