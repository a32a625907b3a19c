package check_test

import "testing"

func TestPortType(t *testing.T) {
	t.Parallel()
	py := func(code string) string {
		return "-- requirements.txt --\n-- .python-version --\n3.13\n-- s.py --\nimport os\nfrom http.server import BaseHTTPRequestHandler, HTTPServer\n" + code + "-- Procfile --\nweb: python s.py\n"
	}
	js := func(code string) string { return nodeManifest + "-- server.js --\n" + code }
	golang := func(addr string) string {
		return "-- go.mod --\nmodule gate\n\ngo 1.25\n-- main.go --\npackage main\n\nimport \"net/http\"\nimport \"os\"\n\nfunc main() {\n\thttp.ListenAndServe(" + addr + ", nil)\n}\n"
	}
	runCases(t, []ruleCase{
		{"text where a number is needed", py("HTTPServer((\"\", os.environ.get(\"PORT\", \"8000\")), BaseHTTPRequestHandler).serve_forever()\n"), []string{"port/type s.py:3 pushed=blocker"}},
		{"twin: a number is made of it", py("HTTPServer((\"\", int(os.environ.get(\"PORT\", \"8000\"))), BaseHTTPRequestHandler).serve_forever()\n"), nil},
		{"an address in the place of a port", js("const http = require(\"http\");\nhttp.createServer().listen(\"0.0.0.0:\" + (process.env.PORT || 3000));\n"), []string{"port/type server.js:2 pushed=blocker"}},
		{"no number at all", js("const port = Number(\"port \" + process.env.PORT);\nrequire(\"http\").createServer().listen(port);\n"), []string{"port/type server.js:1 pushed=blocker"}},
		{"twin: text that the server takes", js("require(\"http\").createServer().listen(process.env.PORT || \"3000\");\n"), nil},
		{"twin: a socket that is meant", js("require(\"http\").createServer().listen(process.env.PORT || \"/run/gate.sock\");\n"), nil},
		{"a port without a colon", golang("os.Getenv(\"PORT\")"), []string{"port/type main.go:7 pushed=blocker"}},
		{"twin: with one", golang("\":\" + os.Getenv(\"PORT\")"), []string{"port/no-fallback main.go:7 pushed=advice"}},
	})
}

func TestPortPrivileged(t *testing.T) {
	t.Parallel()
	tree := func(more string) string {
		return nodeManifest + "-- server.js --\nrequire(\"express\")().listen(process.env.PORT || 80);\n-- Procfile --\nweb: node server.js\n-- .dockerignore --\nnode_modules\n-- Dockerfile --\nFROM node:24-slim\nWORKDIR /srv\nCOPY . .\nRUN npm install --omit=dev\n" + more + "CMD [\"node\", \"server.js\"]\n"
	}
	runCases(t, []ruleCase{
		{"not as root", tree("USER node\nEXPOSE 80\n"), []string{"port/privileged server.js:1 image=blocker"}},
		{"twin: as root", tree("EXPOSE 80\n"), nil},
		{"twin: a high port", tree("USER node\nENV PORT=8080\nEXPOSE 8080\n"), nil},
		{"twin: the program has the right", tree("RUN setcap cap_net_bind_service=+ep /usr/local/bin/node\nUSER node\nEXPOSE 80\n"), nil},
	})
}

func TestPortSeveral(t *testing.T) {
	t.Parallel()
	js := func(code string) string {
		return nodeManifest + "-- server.js --\nconst express = require(\"express\");\nconst app = express();\nconst metrics = express();\n" + code
	}
	runCases(t, []ruleCase{
		{"one port more", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(9100);\n"), []string{"port/several server.js:5 pushed=risk"}},
		{"the same port twice", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(process.env.PORT || 3000);\n"), []string{"port/several server.js:5 pushed=blocker"}},
		{"two binds", flaskManifest + flaskApp + "-- Procfile --\nweb: gunicorn -b 0.0.0.0:$PORT -b 0.0.0.0:9100 app:app\n", []string{"port/several Procfile:1 pushed=risk"}},
		{"twin: the second on loopback", js("app.listen(process.env.PORT || 3000);\nmetrics.listen(9100, \"127.0.0.1\");\n"), nil},
		{"twin: one or the other", js("if (process.env.METRICS) metrics.listen(9100);\nelse app.listen(process.env.PORT || 3000);\n"), nil},
		{"twin: another where the first fails", js("try {\n  app.listen(process.env.PORT || 3000);\n} catch {\n  app.listen(process.env.PORT || 3000);\n}\n"), nil},
	})
}

func TestPortNone(t *testing.T) {
	t.Parallel()
	py := func(files, web string) string {
		return "-- requirements.txt --\nflask==3.1.2\nrequests==2.32.5\ncelery==5.5.3\n-- .python-version --\n3.13\n" + files + "-- Procfile --\nweb: " + web + "\n"
	}
	runCases(t, []ruleCase{
		{"a worker as the web process", py("-- worker.py --\nimport time\nimport requests\n\nwhile True:\n    requests.get(\"https://sky.example/\")\n    time.sleep(60)\n", "python worker.py"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"a program that only works", py("-- jobs.py --\nfrom celery import Celery\n\napp = Celery(\"jobs\")\n", "celery -A jobs worker"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"an application that nothing starts", py("-- app.py --\nfrom flask import Flask\n\napp = Flask(__name__)\n", "python app.py"), []string{"port/none Procfile:1 pushed=blocker"}},
		{"an application of Node.js that nothing starts", nodeManifest + "-- server.js --\nconst app = require(\"express\")();\nmodule.exports = app;\n", []string{"port/none package.json:4 pushed=blocker"}},
		{"twin: something may listen in what cannot be followed", nodeManifest + "-- server.js --\nconst { start } = require(\"./boot\")();\nstart();\n-- boot.js --\nmodule.exports = () => require(process.env.BOOT);\n", nil},
		{"twin: another program is started", py("-- run.py --\nimport subprocess\n\nsubprocess.run([\"gunicorn\", \"app:app\"])\n", "python run.py"), nil},
	})
}

func TestEnvironment(t *testing.T) {
	t.Parallel()
	js := func(code, more string) string {
		return nodeManifest + "-- server.js --\nconst app = require(\"express\")();\n" + code + "app.listen(process.env.PORT || 3000);\n" + more
	}
	const example = "-- .env.example --\n"
	runCases(t, []ruleCase{
		{"undeclared", js("const key = process.env.SKY_KEY;\napp.use(key);\n", ""), []string{"env/undeclared server.js:2 pushed=advice"}},
		{"undeclared, and it must be there", flaskManifest + "-- app.py --\nimport os\nfrom flask import Flask\napp = Flask(__name__)\napp.config[\"SKY\"] = os.environ[\"SKY_KEY\"]\n-- Procfile --\nweb: gunicorn app:app\n", []string{"env/undeclared app.py:4 pushed=risk"}},
		{"undeclared, and the program asks for it", js("if (!process.env.SKY_KEY) throw new Error(\"no key\");\n", ""), []string{"env/undeclared server.js:2 pushed=risk"}},
		{"a name one slip apart", js("const url = process.env.DATABASE_URL;\napp.use(url);\n", example+"# where the bookings are\nDATABSE_URL=\n"), []string{"env/near-miss .env.example:2 pushed=risk"}},
		{"a name in another letter case", js("app.use(process.env.skyKey);\n", example+"SKYKEY=\n"), []string{"env/near-miss .env.example:1 pushed=risk"}},
		{"nothing reads it", js("", example+"OLD_SKY_KEY=\nPORT=3000\n"), []string{"env/unused .env.example:1 pushed=advice"}},
		{"names that are none", js("app.use(process.env.SKY_KEY);\n", example+"SKY_KEY=\nSKY-SITE=\n2ND_DOME=\n"), []string{"env/invalid-name .env.example:2 pushed=risk", "env/invalid-name .env.example:3 pushed=risk"}},
		{"what the host sets", flaskManifest + flaskApp + "-- Procfile --\nweb: PORT=5000 gunicorn app:app\n", []string{"port/literal Procfile:1 pushed=blocker", "env/reserved Procfile:1 pushed=risk"}},
		{"twin: env declared in an example", js("app.use(process.env.SKY_KEY);\n", example+"export SKY_KEY=\n"), nil},
		{"twin: env declared in a descriptor", js("app.use(process.env.SKY_KEY);\n", "-- compose.yaml --\nservices:\n  web:\n    environment:\n      SKY_KEY: x\n"), nil},
		{"twin: a fallback, a question, a comparison", js("const a = process.env.A_KEY || \"x\";\nif (process.env.B_KEY) app.use(a);\nconst c = process.env.C_KEY === \"yes\";\nlet d = process.env.D_KEY;\nif (!d) d = \"x\";\napp.use(c, d);\n", ""), nil},
		{"twin: the platform sets it", js("app.use(process.env.HOME, process.env.NODE_ENV, process.env.npm_package_version);\n", ""), nil},
		{"twin: only where it does not run", js("if (process.env.NODE_ENV === \"test\") app.use(process.env.FAKE_SKY);\n", example+"OTHER=\n-- other.js --\nprocess.env.OTHER;\n"), nil},
		{"twin: a script reads it", js("", example+"BACKUP_SITE=\n-- bin/backup.sh --\nrsync . \"$BACKUP_SITE\"\n"), nil},
		{"twin: two that are alike", js("app.use(process.env.DOME_1, process.env.DOME_2);\n", example+"DOME_1=\nDOME_2=\n"), nil},
		{"twin: the host's own is kept", flaskManifest + flaskApp + "-- Procfile --\nweb: PORT=${PORT:-5000} gunicorn app:app\n", nil},
	})
}
