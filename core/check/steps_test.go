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
		{"a script without exec", tree + "CMD [\"sh\", \"run.sh\"]\n-- run.sh --\n#!/bin/sh\nset -e\nnode server.js\n", []string{"start/signal run.sh:3 image=risk"}},
		{"twin: the last one is entered", tree + "CMD node -v && exec node server.js\n", nil},
		{"twin: one command", tree + "CMD node server.js\n", nil},
		{"twin: a script with exec", tree + "CMD [\"sh\", \"run.sh\"]\n-- run.sh --\n#!/bin/sh\nset -e\nexec node server.js\n", nil},
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
		{"nginx by itself", "-- index.html --\n<p>clear</p>\n-- Dockerfile --\nFROM nginx:1.29\nCOPY . /usr/share/nginx/html\nEXPOSE 80\nCMD [\"nginx\"]\n", []string{"start/background Dockerfile:4 image=blocker"}},
		{"twin: nginx that stays", "-- index.html --\n<p>clear</p>\n-- Dockerfile --\nFROM nginx:1.29\nCOPY . /usr/share/nginx/html\nEXPOSE 80\nCMD [\"nginx\", \"-g\", \"daemon off;\"]\n", nil},
	})
}

func TestStartNotExecutable(t *testing.T) {
	t.Parallel()
	script := "#!/bin/sh\nexec node server.js\n"
	runCases(t, []ruleCase{
		{"no execute bit on the disk", nodeManifest + server + "-- Procfile --\nweb: ./run.sh\n-- run.sh --\n" + script, []string{"start/not-executable run.sh:1 pushed=blocker"}},
		{"no execute bit in git", nodeManifest + server + "-- Procfile --\nweb: bin/run\n-- bin/run --\n" + script + "-- .git --\n", []string{"start/not-executable bin/run:1 pushed=blocker"}},
		{"twin: it has one", nodeManifest + server + "-- Procfile --\nweb: ./run.sh\n-- run.sh exec --\n" + script, nil},
		{"twin: a shell reads it", nodeManifest + server + "-- Procfile --\nweb: sh run.sh\n-- run.sh --\n" + script, nil},
		{"no interpreter, and no shell", nodeManifest + server + imageHead + "CMD [\"./run.sh\"]\n-- run.sh exec --\nexec node server.js\n", []string{"start/not-executable run.sh:1 image=blocker"}},
		{"twin: the image sets the bit", nodeManifest + server + imageHead + "RUN chmod +x run.sh\nCMD [\"./run.sh\"]\n-- run.sh --\n" + script, nil},
		{"twin: the copy sets it", nodeManifest + server + "-- .dockerignore --\nnode_modules\n-- Dockerfile --\nFROM node:24-slim\nWORKDIR /srv\nCOPY . .\nCOPY --chmod=755 run.sh ./\nRUN npm install --omit=dev\nEXPOSE 3000\nCMD [\"./run.sh\"]\n-- run.sh --\n" + script, nil},
	})
}

func TestStartReleaseUnsafe(t *testing.T) {
	t.Parallel()
	release := func(command string) string {
		return "-- requirements.txt --\ndjango==5.2.8\ngunicorn==23.0.0\n-- .python-version --\n3.13\n-- manage.py --\nimport os\nfrom django.core.management import execute_from_command_line\nos.environ.setdefault(\"DJANGO_SETTINGS_MODULE\", \"hill.settings\")\nexecute_from_command_line()\n-- hill/__init__.py --\n-- hill/settings.py --\nimport os\nSECRET_KEY = os.environ[\"SECRET_KEY\"]\nALLOWED_HOSTS = [\"hill.example\"]\n-- hill/wsgi.py --\nfrom django.core.wsgi import get_wsgi_application\napplication = get_wsgi_application()\n-- Procfile --\nrelease: " + command + "\nweb: gunicorn hill.wsgi\n"
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
		{"outside of any guard", flaskManifest + "-- app.py --\nfrom flask import Flask\n\napp = Flask(__name__)\n\napp.run(port=5000)\n-- Procfile --\nweb: gunicorn app:app\n", []string{"start/runs-on-import app.py:5 pushed=blocker"}},
		{"twin: under the main module", flaskManifest + "-- app.py --\nfrom flask import Flask\n\napp = Flask(__name__)\n\nif __name__ == \"__main__\":\n    app.run(port=5000)\n-- Procfile --\nweb: gunicorn app:app\n", nil},
		{"twin: in a function", flaskManifest + "-- app.py --\nfrom flask import Flask\n\napp = Flask(__name__)\n\n\ndef main():\n    app.run(port=5000)\n-- Procfile --\nweb: gunicorn app:app\n", nil},
	})
}

func TestStartArtefact(t *testing.T) {
	t.Parallel()
	pom := func(plugin string) string {
		return "-- pom.xml --\n<project>\n  <groupId>hill</groupId>\n  <artifactId>gate</artifactId>\n  <version>1.2.0</version>\n  <properties><maven.compiler.release>21</maven.compiler.release></properties>\n  <dependencies><dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId><version>6.7.0</version></dependency></dependencies>\n  <build><plugins>" + plugin + "</plugins></build>\n</project>\n-- src/main/java/hill/Gate.java --\npackage hill;\npublic class Gate { public static void main(String[] a) { } }\n"
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
		return "-- deno.json --\n{\n  \"tasks\": {\n    \"start\": \"" + start + "\"\n  }\n}\n-- .tool-versions --\ndeno 2.5.6\n-- main.ts --\n" + code
	}
	const code = "const port = Number(Deno.env.get(\"PORT\") ?? 8000);\nDeno.serve({ port }, () => new Response(\"clear\"));\n"
	runCases(t, []ruleCase{
		{"nothing is granted", deno("deno run main.ts", code), []string{"start/permission deno.json:3 pushed=blocker", "start/permission deno.json:3 pushed=blocker"}},
		{"not the environment", deno("deno run --allow-net main.ts", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"another variable", deno("deno run --allow-net --allow-env=HOST main.ts", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"flags after the file", deno("deno run --allow-net main.ts --allow-env", code), []string{"start/permission deno.json:3 pushed=blocker"}},
		{"files that are read", deno("deno run -NE main.ts", "const page = await Deno.readTextFile(\"index.html\");\n"+code), []string{"start/permission deno.json:3 pushed=risk"}},
		{"twin: what is needed", deno("deno run --allow-net --allow-env=PORT main.ts", code), nil},
		{"twin: everything", deno("deno run -A main.ts", code), nil},
	})
}

func TestStartBuildMissing(t *testing.T) {
	t.Parallel()
	manifest := func(scripts string) string {
		return "-- package.json --\n{\n  \"name\": \"gate\",\n  \"engines\": { \"node\": \"24.x\" },\n  \"scripts\": { " + scripts + " },\n  \"dependencies\": { \"express\": \"5.1.0\" },\n  \"devDependencies\": { \"typescript\": \"5.9.3\" }\n}\n-- tsconfig.json --\n{ \"compilerOptions\": { \"outDir\": \"dist\", \"rootDir\": \"src\" } }\n-- src/server.ts --\nimport express from \"express\";\nexpress().listen(process.env.PORT || 3000);\n"
	}
	const image = "-- .dockerignore --\nnode_modules\ndist\n-- Dockerfile --\nFROM node:24-slim\nWORKDIR /srv\nCOPY . .\nRUN npm ci\n"
	runCases(t, []ruleCase{
		{"a step that hosts do not run", manifest(`"compile": "tsc", "start": "node dist/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"no step at all", manifest(`"start": "node dist/server.js"`), []string{"start/build-missing package.json:4 pushed=blocker"}},
		{"a framework that must be built", "-- package.json --\n{\n  \"engines\": { \"node\": \"24.x\" },\n  \"scripts\": { \"start\": \"next start -p $PORT\" },\n  \"dependencies\": { \"next\": \"16.0.1\", \"react\": \"19.2.0\", \"react-dom\": \"19.2.0\" }\n}\n-- pages/index.js --\nexport default function Page() { return null; }\n", []string{"start/build-missing package.json:3 pushed=blocker"}},
		{"no step of the image builds", manifest(`"build": "tsc", "start": "node dist/server.js"`) + image + "EXPOSE 3000\nCMD [\"node\", \"dist/server.js\"]\n", []string{"start/build-missing Dockerfile:6 image=blocker"}},
		{"twin: the build script makes it", manifest(`"build": "tsc", "start": "node dist/server.js"`), nil},
		{"before each start, when the compiler is gone", manifest(`"prestart": "tsc", "start": "node dist/server.js"`), []string{"manifest/dev-only package.json:6 pushed=blocker"}},
		{"twin: the image builds", manifest(`"build": "tsc", "start": "node dist/server.js"`) + image + "RUN npm run build\nEXPOSE 3000\nCMD [\"node\", \"dist/server.js\"]\n", nil},
	})
}
