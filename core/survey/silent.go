package survey

import (
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/value"
)

// workers are programs that never serve, with the word that makes them work
// where the program does other things too (their own documentation, 2026-11).
var workers = map[string]string{
	"celery": "", "rq": "", "dramatiq": "", "huey_consumer": "", "huey_consumer.py": "", "arq": "", "sidekiq": "", "resque": "", "good_job": "", "alembic": "",
	"tsc": "", "sequelize": "", "knex": "", "prisma": "", "rake": "",
}

// asked are packages with which a program listens only where it says so with
// a call that Ubique knows.
var asked = words(`express koa fastify hono @hono/node-server polka restify socket.io ws connect @koa/router koa-router body-parser cors helmet morgan compression
	cookie-parser express-session flask fastapi starlette quart bottle aiohttp tornado waitress sanic werkzeug jinja2 django gin echo fiber elysia @oak/oak`)

// mute are packages that never listen: clients, data, logs, schedules.
var mute = words(`axios node-fetch got undici ky superagent pg mysql mysql2 redis ioredis mongoose mongodb sqlite3 better-sqlite3 knex sequelize typeorm amqplib bull bullmq agenda
	node-cron cron dotenv lodash dayjs moment date-fns luxon pino winston bunyan debug uuid nanoid chalk zod joi yup ajv envalid convict env-var bcrypt jsonwebtoken passport nodemailer handlebars ejs pug mustache
	requests httpx redis-py psycopg psycopg2 psycopg2-binary sqlalchemy pymongo pymysql mysqlclient celery rq schedule apscheduler pika boto3 python-dotenv pydantic pydantic-settings numpy pandas
	python-decouple environs django-environ loguru structlog rich click typer pyyaml tomli beautifulsoup4 lxml pillow markdown alembic flask-sqlalchemy flask-cors flask-migrate flask-login flask-wtf
	djangorestframework whitenoise dj-database-url dj-rest-auth python-multipart jinja2 marshmallow tenacity`)

func words(s string) map[string]bool {
	m := map[string]bool{}
	for w := range strings.FieldsSeq(s) {
		m[w] = true
	}
	return m
}

// doors are modules of the languages through which a program can listen, or
// start another that does, without a call of the table.
var doors = words(`child_process cluster worker_threads subprocess multiprocessing socket xmlrpc.server ctypes os/exec syscall plugin net/rpc node:child_process node:cluster node:worker_threads`)

// openers are names of methods that open ports; one that could not be followed
// may be any server's.
var openers = words(`listen Listen serve Serve serve_forever ListenAndServe ListenAndServeTLS run_app run_forever bind run_simple run_server start_server create_server startServer bootstrap run_until_complete`)

// made are the calls of Node.js that make a server, which listens where it is told to
// (Node.js 24 documentation, "HTTP", "HTTPS", "HTTP/2", "Net" and "TLS").
var made = words(`http.createServer https.createServer http2.createServer net.createServer tls.createServer`)

// Silent reports whether a start certainly listens nowhere, with what it runs
// instead. Where something may listen that cannot be followed, it does not say
// so.
func Silent(c *fact.Component, st *fact.Start) (why string, ok bool) {
	f := st.Final
	if st == nil || f.Reason != "" || f.Missing != nil || len(st.Listeners) > 0 || f.Manager != "" {
		return "", false
	}
	if _, worker := workers[f.Program]; worker {
		return f.Program + " does work and serves nothing", true
	}
	if st.Target == nil || st.Target.File == "" || st.Target.Callable != "" || st.Program == nil || len(st.Reached) == 0 || f.Known == nil || f.Known.Server != "" {
		return "", false
	}
	if !slices.Contains([]string{"node", "python", "deno", "bun"}, c.Engine()) || f.Known.Name != "node" && f.Known.Name != "python" && f.Known.Name != "deno" && f.Known.Name != "bun" && f.Known.Name != "tsx" && f.Known.Name != "ts-node" {
		return "", false
	}
	app := ""
	for _, i := range st.Imports {
		switch {
		case i.TypeOnly:
		case i.Missing:
			return "", false
		case doors[strings.TrimPrefix(i.Module, "node:")]:
			return "", false
		case i.Package == "" || i.Standard:
		case asked[i.Package]:
			app = i.Package
		case !mute[i.Package]:
			return "", false
		}
	}
	for _, name := range st.Reached {
		file := st.Program.Loader.File(name)
		if file == nil || file.Skimmed {
			return "", false
		}
		if opensUnknown(st, file) {
			return "", false
		}
	}
	if app != "" {
		return "an application of " + app + " is made, and nothing tells it to listen", true
	}
	return "nothing in it listens", true
}

// opensUnknown reports whether a file calls something that could listen and
// is not followed.
func opensUnknown(st *fact.Start, f *code.File) bool {
	for _, site := range f.Calls {
		callee := site.Node.Kid(0)
		name := ""
		if callee.Is(code.Name) || callee.Is(code.Member) {
			name = callee.Name
		}
		if name == "import" || name == "__import__" || name == "exec" || name == "eval" || name == "import_module" {
			return true
		}
		if name == "createServer" && !made[st.Program.Callee(site).Text] {
			return true
		}
		if !openers[name] && name != "run" && name != "start" {
			continue
		}
		v := st.Program.Callee(site)
		switch {
		case v.Kind == value.External && (name == "run" || name == "start"):
			top, _, _ := strings.Cut(v.Text, ".")
			if top == "asyncio" {
				continue
			}
			if !mute[strings.TrimSuffix(top, "()")] {
				return true
			}
		case name == "run" || name == "start":
			// a function of the tree is read like all others
			if v.Kind == value.Unknown {
				return true
			}
		default:
			return true
		}
	}
	return false
}
