package command

import "slices"

// TargetKind says what a program is given to load.
type TargetKind uint8

// The kinds of targets.
const (
	NoTarget TargetKind = iota
	FileTarget
	CallableTarget // module:callable
	FolderTarget
)

// Program is what is known of a program that start commands name. Facts are
// from the programs' own help texts and documentation, read 2026-11.
type Program struct {
	Name     string
	Runtime  string     // node or python
	Packages []string   // packages that give the program; none: it comes with the runtime
	Module   string     // the module that python -m runs as it, where that has another name
	Target   TargetKind // what its first free argument is
	Verbs    string     // words of its own that stand before the target, between spaces
	Values   string     // flags that take a value, between spaces
	Dev      string     // what it is, when it is a development server
	Watch    string     // what it is, when it restarts on changes
	DevIn    string     // its verbs that run a development server, between spaces
	DevNot   string     // its verbs that run none, between spaces, where Dev is said of the rest
	WatchOf  string     // its verbs that restart on changes, between spaces
	WatchIn  string     // flags that watch, reload or open a debugger
	Server   string     // the defaults to use for its listener, a key of the servers' table
}

var programList = []Program{
	{Name: "node", Runtime: "node", Target: FileTarget, WatchIn: " --watch --inspect --inspect-brk --watch-path ", Values: " -r --require --import --loader --experimental-loader --env-file --env-file-if-exists -e --eval -p --print --title -C --conditions --max-old-space-size --stack-size "},
	{Name: "bun", Runtime: "bun", Target: FileTarget, Verbs: " run ", WatchIn: " --watch --hot ", Values: " --port --env-file --cwd "},
	{Name: "deno", Runtime: "deno", Target: FileTarget, Verbs: " run serve ", WatchIn: " --watch --watch-hmr --inspect --inspect-brk ", Values: " --port --host -c --config --import-map --lock --env-file --seed --location --cert -r --reload "},
	{Name: "ts-node", Runtime: "node", Packages: []string{"ts-node"}, Target: FileTarget, Values: " -P --project -r --require "},
	{Name: "ts-node-esm", Runtime: "node", Packages: []string{"ts-node"}, Target: FileTarget},
	{Name: "tsx", Runtime: "node", Packages: []string{"tsx"}, Target: FileTarget, Verbs: " watch ", WatchOf: " watch ", Values: " --tsconfig --env-file ", WatchIn: " --inspect --watch "},
	{Name: "babel-node", Runtime: "node", Packages: []string{"@babel/node"}, Target: FileTarget, Dev: "compiles in memory and is for development only"},
	{Name: "nodemon", Runtime: "node", Packages: []string{"nodemon"}, Target: FileTarget, Watch: "restarts on every change", Values: " -w --watch -e --ext -x --exec -i --ignore --delay --config --signal "},
	{Name: "ts-node-dev", Runtime: "node", Packages: []string{"ts-node-dev"}, Target: FileTarget, Watch: "restarts on every change"},
	{Name: "pm2-runtime", Runtime: "node", Packages: []string{"pm2"}, Target: FileTarget, Values: " -i --instances --name --env "},
	{Name: "pm2", Runtime: "node", Packages: []string{"pm2"}, Target: FileTarget, Values: " -i --instances --name --env "},
	{Name: "forever", Runtime: "node", Packages: []string{"forever"}, Target: FileTarget},
	{Name: "vite", Runtime: "node", Packages: []string{"vite"}, Dev: "the development server of Vite", DevNot: " build preview optimize ", Values: " --port --host -c --config -m --mode --base ", Server: "vite"},
	{Name: "next", Runtime: "node", Packages: []string{"next"}, Values: " -p --port -H --hostname ", Server: "next"},
	{Name: "nuxt", Runtime: "node", Packages: []string{"nuxt"}, DevIn: " dev "}, {Name: "nuxi", Runtime: "node", Packages: []string{"nuxi", "nuxt"}, DevIn: " dev "},
	{Name: "remix-serve", Runtime: "node", Packages: []string{"@remix-run/serve"}, Target: FileTarget, Server: "remix-serve"},
	{Name: "react-router-serve", Runtime: "node", Packages: []string{"@react-router/serve"}, Target: FileTarget, Server: "remix-serve"},
	{Name: "astro", Runtime: "node", Packages: []string{"astro"}, Values: " --port --host --config --root --mode ", Server: "astro preview"},
	{Name: "webpack-dev-server", Runtime: "node", Packages: []string{"webpack-dev-server"}, Dev: "the development server of webpack"},
	{Name: "webpack", Runtime: "node", Packages: []string{"webpack"}, DevIn: " serve "},
	{Name: "react-scripts", Runtime: "node", Packages: []string{"react-scripts"}, DevIn: " start "},
	{Name: "ng", Runtime: "node", Packages: []string{"@angular/cli"}, DevIn: " serve "},
	{Name: "react-router", Runtime: "node", Packages: []string{"@react-router/dev"}, DevIn: " dev "},
	{Name: "remix", Runtime: "node", Packages: []string{"@remix-run/dev"}, DevIn: " dev vite:dev "},
	{Name: "gatsby", Runtime: "node", Packages: []string{"gatsby", "gatsby-cli"}, DevIn: " develop "},
	{Name: "vue-cli-service", Runtime: "node", Packages: []string{"@vue/cli-service"}, DevIn: " serve "},
	{Name: "vitepress", Runtime: "node", Packages: []string{"vitepress"}, DevIn: " dev "},
	{Name: "docusaurus", Runtime: "node", Packages: []string{"@docusaurus/core"}, DevIn: " start "},
	{Name: "vinxi", Runtime: "node", Packages: []string{"vinxi"}, DevIn: " dev "},
	{Name: "parcel", Runtime: "node", Packages: []string{"parcel"}, Dev: "the development server of Parcel", DevNot: " build watch help "},
	{Name: "live-server", Runtime: "node", Packages: []string{"live-server"}, Dev: "a development server that reloads its pages"},
	{Name: "tsc-watch", Runtime: "node", Packages: []string{"tsc-watch"}, Watch: "compiles and restarts on every change"},
	{Name: "node-dev", Runtime: "node", Packages: []string{"node-dev"}, Target: FileTarget, Watch: "restarts on every change"},
	{Name: "nest", Runtime: "node", Packages: []string{"@nestjs/cli"}, Target: FileTarget, Verbs: " start build ", WatchIn: " --watch -w --debug -d "},
	{Name: "fastify", Runtime: "node", Packages: []string{"fastify-cli"}, Target: FileTarget, Verbs: " start ", Values: " -p --port -a --address -l --log-level -o --options ", Server: "fastify-cli"},
	{Name: "serve", Runtime: "node", Packages: []string{"serve"}, Target: FolderTarget, Values: " -l --listen -p --port -c --config ", Server: "serve"},
	{Name: "sirv", Runtime: "node", Packages: []string{"sirv-cli"}, Target: FolderTarget, Values: " -p --port -H --host -m --maxage -C --cert -K --key -P --pass -I --ignores ", Server: "sirv"},
	{Name: "http-server", Runtime: "node", Packages: []string{"http-server"}, Target: FolderTarget, Values: " -p --port -a -c -P --proxy ", Server: "http-server"},
	{Name: "tsc", Runtime: "node", Packages: []string{"typescript"}},
	{Name: "concurrently", Runtime: "node", Packages: []string{"concurrently"}},
	{Name: "cross-env", Runtime: "node", Packages: []string{"cross-env"}},
	{Name: "dotenv", Runtime: "node", Packages: []string{"dotenv-cli"}},
	{Name: "env-cmd", Runtime: "node", Packages: []string{"env-cmd"}},
	{Name: "json-server", Runtime: "node", Packages: []string{"json-server"}, Dev: "a stand-in for development", Values: " -p --port -H --host -c --config -r --routes -m --middlewares -s --static -S --snapshots -d --delay -i --id ", Server: "json-server"},

	{Name: "python", Runtime: "python", Target: FileTarget, Values: " -m -c -W -X "},
	{Name: "gunicorn", Runtime: "python", Packages: []string{"gunicorn"}, Target: CallableTarget, WatchIn: " --reload --spew ", Server: "gunicorn",
		Values: " -b --bind -w --workers -k --worker-class --threads -t --timeout -c --config --log-level --access-logfile --error-logfile --log-file -n --name --chdir -e --env --max-requests --max-requests-jitter --keep-alive --graceful-timeout --worker-tmp-dir --worker-connections --forwarded-allow-ips --limit-request-line -p --pid -u --user -g --group -m --umask --access-logformat --statsd-host --certfile --keyfile --pythonpath --backlog --log-config --paste --reload-extra-file --proxy-allow-from "},
	{Name: "uvicorn", Runtime: "python", Packages: []string{"uvicorn"}, Target: CallableTarget, WatchIn: " --reload ", Server: "uvicorn",
		Values: " --host --port --uds --fd --reload-dir --reload-include --reload-exclude --reload-delay --workers --loop --http --ws --lifespan --interface --env-file --log-config --log-level --root-path --limit-concurrency --backlog --limit-max-requests --timeout-keep-alive --timeout-graceful-shutdown --ssl-keyfile --ssl-certfile --app-dir --forwarded-allow-ips --header --h11-max-incomplete-event-size --ws-max-size --ws-ping-interval --ws-ping-timeout "},
	{Name: "hypercorn", Runtime: "python", Packages: []string{"hypercorn"}, Target: CallableTarget, WatchIn: " --reload --debug ", Server: "hypercorn", Values: " -b --bind -w --workers -k --worker-class -c --config --access-logfile --error-logfile --log-level --root-path -g -u -p --pid --keep-alive --graceful-timeout "},
	{Name: "daphne", Runtime: "python", Packages: []string{"daphne"}, Target: CallableTarget, Server: "daphne", Values: " -b --bind -p --port -u --unix-socket --fd -e --endpoint -v --verbosity -t --http-timeout --access-log --root-path --server-name --application-close-timeout --websocket_timeout --websocket_connect_timeout "},
	{Name: "waitress-serve", Module: "waitress", Runtime: "python", Packages: []string{"waitress"}, Target: CallableTarget, Server: "waitress-serve", Values: " --host --port --listen --unix-socket --threads --url-prefix --url-scheme --app "},
	{Name: "flask", Runtime: "python", Packages: []string{"flask"}, Values: " --app -A -p --port -h --host --env-file -e ", WatchIn: " --reload --debug ", Dev: "the development server of Flask", Server: "flask run"},
	{Name: "fastapi", Runtime: "python", Packages: []string{"fastapi-cli", "fastapi"}, Target: FileTarget, Verbs: " run dev ", Values: " --host --port --workers --app --root-path ", Server: "fastapi"},
	{Name: "django-admin", Runtime: "python", Packages: []string{"django"}, Values: " --settings --pythonpath "},
	{Name: "uwsgi", Runtime: "python", Packages: []string{"uwsgi"}, Server: "uwsgi", Values: " --http --http-socket --socket -s --wsgi-file --module -w --processes -p --ini --plugin --plugins --callable --threads --uid --gid --chdir --virtualenv -H --stats --yaml --json "},
	{Name: "streamlit", Runtime: "python", Packages: []string{"streamlit"}, Target: FileTarget, Verbs: " run ", Values: " --server.port --server.address --server.headless ", Server: "streamlit"},
	{Name: "mkdocs", Runtime: "python", Packages: []string{"mkdocs"}, DevIn: " serve "},
	{Name: "watchmedo", Runtime: "python", Packages: []string{"watchdog"}, WatchOf: " auto-restart "}, {Name: "watchfiles", Runtime: "python", Packages: []string{"watchfiles"}, Watch: "restarts on every change"},
	{Name: "celery", Runtime: "python", Packages: []string{"celery"}, Values: " -A --app -l --loglevel -c --concurrency -Q "},
	{Name: "alembic", Runtime: "python", Packages: []string{"alembic"}},
	{Name: "ruby", Runtime: "ruby", Target: FileTarget, Values: " -I -r -C -E -e -W "},
	{Name: "puma", Runtime: "ruby", Packages: []string{"puma"}, Server: "puma", Values: " -p --port -b --bind -C --config -e --environment -t --threads -w --workers "},
	{Name: "rails", Runtime: "ruby", Packages: []string{"rails", "railties"}, Server: "rails", Values: " -p --port -b --binding -e --environment "},
	{Name: "rackup", Runtime: "ruby", Packages: []string{"rackup", "rack"}, Server: "rackup", Values: " -p --port -o --host -s --server -E --env "},
	{Name: "unicorn", Runtime: "ruby", Packages: []string{"unicorn"}, Server: "unicorn", Values: " -p --port -o --host -l --listen -c --config-file -E "},
	{Name: "thin", Runtime: "ruby", Packages: []string{"thin"}, Server: "thin", Values: " -p --port -a --address -R --rackup -e --environment -S --socket -C --config -s --servers -A --adapter -c --chdir --prefix -l --log -P --pid -u --user -g --group "},
	{Name: "falcon", Runtime: "ruby", Packages: []string{"falcon"}, Server: "falcon", Values: " -b --bind -p --port "},
	{Name: "sidekiq", Runtime: "ruby", Packages: []string{"sidekiq"}},
	{Name: "rake", Runtime: "ruby", Packages: []string{"rake"}},
	{Name: "jekyll", Runtime: "ruby", Packages: []string{"jekyll"}, DevIn: " serve server s "}, {Name: "rerun", Runtime: "ruby", Packages: []string{"rerun"}, Watch: "restarts on every change"},
	{Name: "java", Runtime: "java", Values: " -jar -cp -classpath --module-path -p -m "},
	{Name: "jwebserver", Runtime: "java", Server: "jwebserver", Values: " -p --port -b --bind-address -d --directory -o --output "},
	{Name: "mvn", Runtime: "java", DevIn: " quarkus:dev "}, {Name: "mvnw", Runtime: "java", DevIn: " quarkus:dev "}, {Name: "gradle", Runtime: "java", DevIn: " quarkusDev "}, {Name: "gradlew", Runtime: "java", DevIn: " quarkusDev "},
	{Name: "go", Runtime: "go", Verbs: " run "}, {Name: "air", Runtime: "go", Watch: "builds and restarts on every change"},
	{Name: "php", Runtime: "php", Values: " -S -t -d -c -r --server --docroot --define --run ", Server: "php -S"},
	{Name: "php-fpm", Runtime: "php"}, {Name: "apache2-foreground", Runtime: "php"},
	{Name: "dotnet", Runtime: "dotnet", WatchOf: " watch "},
	{Name: "cargo", Runtime: "rust", WatchOf: " watch "},
	{Name: "mix", Runtime: "elixir"}, {Name: "elixir", Runtime: "elixir", Target: FileTarget, Values: " -e -r -pr -S --name --sname --cookie --erl "}, {Name: "iex", Runtime: "elixir"},
	{Name: "hugo", DevIn: " server serve "}, {Name: "nginx"}, {Name: "caddy"}, {Name: "httpd"}, {Name: "httpd-foreground"}, {Name: "apache2"}, {Name: "catalina.sh"},
	{Name: "aiohttp.web", Runtime: "python", Packages: []string{"aiohttp"}, Target: CallableTarget, Server: "aiohttp.web", Values: " -H --hostname -P --port -U --path "},
	{Name: "http.server", Runtime: "python", Server: "http.server", Values: " -b --bind -d --directory "},
}

// fetchers are scripts that hand over to a build tool of that name, which they fetch (Gradle
// 9, "Gradle Wrapper"; Apache Maven Wrapper 3.3).
var fetchers = map[string]bool{"gradlew": true, "mvnw": true}

// lookup finds a program by its exact name.
func lookup(name string) *Program {
	for i := range programList {
		if programList[i].Name == name {
			return &programList[i]
		}
	}
	return nil
}

// module finds the program that python -m runs by the name of a module.
func module(name string) *Program {
	for i := range programList {
		if programList[i].Module == name && name != "" {
			return &programList[i]
		}
	}
	return Lookup(name)
}

// Lookup gives what is known of a program, nil for one that is not known.
// Versioned names of the interpreters (python3.12) count as the interpreter.
func Lookup(name string) *Program {
	if p := lookup(name); p != nil {
		return p
	}
	rest, ok := cutInterpreter(name)
	if ok {
		return lookup(rest)
	}
	return nil
}

// only gives the one program of a package of npm that has another name than the package
// (npm 11, "npm exec": with one program, that is run); empty for none and for several.
func only(pkg string) string {
	name := ""
	for _, p := range programList {
		if p.Runtime != "node" || p.Name == pkg || !slices.Contains(p.Packages, pkg) {
			if p.Name == pkg {
				return ""
			}
			continue
		}
		if name != "" {
			return ""
		}
		name = p.Name
	}
	return name
}

func cutInterpreter(name string) (string, bool) {
	for _, base := range []string{"python", "nodejs", "node"} {
		if len(name) > len(base) && name[:len(base)] == base || name == "nodejs" && base == "nodejs" {
			for _, c := range name[len(base):] {
				if (c < '0' || c > '9') && c != '.' {
					return "", false
				}
			}
			if base == "nodejs" {
				base = "node"
			}
			return base, true
		}
	}
	return "", false
}

// Fronts are servers that take requests and hand them on: the host talks to them.
var Fronts = map[string]bool{"nginx": true, "haproxy": true, "caddy": true, "httpd": true, "apache2": true, "apachectl": true, "lighttpd": true, "envoy": true, "traefik": true, "varnishd": true}

// Shells read a script or, with -c, a command.
var Shells = map[string]bool{"sh": true, "bash": true, "dash": true, "zsh": true, "ash": true, "ksh": true}

// handsOver are scripts of official base images that end by running what they
// are given (docker-library: node, python and others).
var handsOver = map[string]bool{"docker-entrypoint.sh": true}

// wrappers run the command that follows them, after their own flags. The
// value is the flags that take a value.
var wrappers = map[string]string{
	"exec": " -a ", "env": " -u --unset -C --chdir -S ", "nohup": "", "time": "", "command": "", "nice": " -n ", "sudo": " -u -g ", "doas": " -u ", "setsid": "", "stdbuf": " -o -e -i ",
	"dumb-init": "", "tini": " -e -p -w ", "/sbin/tini": "", "catchsegv": "", "gosu": "\x01", "su-exec": "\x01", "timeout": "\x01", "wait-for-it": "\x02", "wait-for-it.sh": "\x02", "wait-for": "\x02",
	"cross-env": "", "cross-env-shell": "", "npx": " -p --package -c ", "bunx": "", "dotenv": " -e -f -v ", "env-cmd": " -f --file -e --environments -r --rc-file ", "xvfb-run": "", "opentelemetry-instrument": " --traces_exporter --metrics_exporter --service_name ",
}
