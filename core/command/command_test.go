package command_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"ubique/core/command"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

func tree(t testing.TB, files map[string]string) *source.Tree {
	t.Helper()
	dir := t.TempDir()
	for name, text := range files {
		p := filepath.Join(dir, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(p), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(p, []byte(text), 0o755); err != nil {
			t.Fatal(err)
		}
	}
	tr, err := source.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { tr.Close() })
	return tr
}

var scripts = map[string]string{
	"start": "node server.js", "prestart": "npm run build", "build": "tsc -p .", "serve": "cross-env A=1 npm run start -- --verbose", "loop": "npm run loop",
	"dev": "nodemon --exec tsx src/server.ts", "win": "set A=1 && node x.js", "chain": "cd api && npm start",
}

// summary is where a command ends: folder, program, arguments, and the
// variables that are set on the way.
func summary(f command.Final) string {
	if f.Missing != nil {
		return "missing " + f.Missing.Kind + " " + f.Missing.Name
	}
	if f.Reason != "" {
		return "unknown"
	}
	var parts []string
	if f.Dir != "" {
		parts = append(parts, f.Dir+":")
	}
	for _, a := range f.Env {
		v := "?"
		if a.Value != nil && a.Value.Kind == value.Str {
			v = a.Value.Text
		}
		parts = append(parts, a.Name+"="+v)
	}
	parts = append(parts, f.Program)
	for _, a := range f.Args {
		parts = append(parts, a.Text)
	}
	return strings.Join(parts, " ")
}

func TestFollow(t *testing.T) {
	tr := tree(t, map[string]string{
		"server.js": "", "api/server.js": "", "app.py": "",
		"start.sh":          "#!/bin/sh\n# comes up\nset -e\nexport PORT=${PORT:-8080}\npython manage.py migrate\nexec gunicorn app:app -b 0.0.0.0:$PORT\n",
		"bin/run":           "#!/usr/bin/env bash\nif [ -n \"$WORKER\" ]; then\n  exec celery -A app worker\nfi\nexec uvicorn app:app\n",
		"bin/entry.sh":      "#!/bin/sh\nset -e\nwait-for-it db:5432 -- echo up\nexec \"$@\"\n",
		"bin/tool":          "#!/usr/bin/env python3\nprint('sky')\n",
		"broken.sh":         "if [ then\n",
		"docker/start":      "#!/bin/bash\r\nexec node server.js\r\n",
		"background/run.sh": "node worker.js &\nnode server.js\n",
	})
	for cmd, want := range map[string]string{
		"node server.js":                               "node server.js",
		"NODE_ENV=production node server.js":           "NODE_ENV=production node server.js",
		"exec node --max-old-space-size=300 server.js": "node --max-old-space-size=300 server.js",
		"env A=1 B=2 node server.js":                   "A=1 B=2 node server.js",
		"export A=1 && node server.js":                 "A=1 node server.js",
		"A=1; node server.js":                          "A=? node server.js", // not exported
		"export A=1; node server.js":                   "A=1 node server.js",
		"A=1; export A; node server.js":                "A=? A=1 node server.js",
		"cd api && node server.js":                     "api: node server.js",
		"(cd api; exec node server.js)":                "api: node server.js",
		"npm start":                                    "node server.js",
		"npm run serve":                                "A=1 node server.js --verbose",
		"yarn start":                                   "node server.js",
		"pnpm run start":                               "node server.js",
		"npm run nothing":                              "missing script nothing",
		"npm run loop":                                 "unknown",
		"npm --prefix api start":                       "api: node server.js",
		"npm run chain":                                "api: node server.js",
		"npx -y serve@14 build":                        "serve build",
		"yarn next start -p 3000":                      "next start -p 3000",
		"sh start.sh":                                  "PORT=? gunicorn app:app -b 0.0.0.0:$PORT",
		"./start.sh":                                   "PORT=? gunicorn app:app -b 0.0.0.0:$PORT",
		"bash -c 'cd api && exec node server.js'":      "api: node server.js",
		"sh -lc \"node server.js\"":                    "node server.js",
		"bin/run":                                      "uvicorn app:app",
		"bin/entry.sh node server.js":                  "node server.js",
		"bin/tool --x":                                 "python bin/tool --x",
		"docker/start":                                 "node server.js",
		"bash broken.sh":                               "unknown",
		"sh gone.sh":                                   "missing file gone.sh",
		"./gone":                                       "missing file ./gone",
		"python -m gunicorn app:app":                   "gunicorn app:app",
		"python3.12 -u -X dev app.py --port 1":         "python3.12 app.py --port 1",
		"python -m dome --fast":                        "dome dome --fast",
		"python -c 'print(1)'":                         "python -c print(1)",
		"poetry run gunicorn app:app":                  "gunicorn app:app",
		"uv run --no-dev uvicorn app:app":              "uvicorn app:app",
		"pipenv run python app.py":                     "python app.py",
		"dumb-init -- node server.js":                  "node server.js",
		"tini -- node server.js":                       "node server.js",
		"timeout 30 node server.js":                    "node server.js",
		"su-exec node node server.js":                  "node server.js",
		"nohup node server.js &":                       "node server.js",
		"./wait-for-it.sh db:5432 -- node server.js":   "node server.js",
		"dotenv -e .env -- node server.js":             "node server.js",
		"node server.js | tee log":                     "node server.js",
		"python manage.py migrate && gunicorn app:app": "gunicorn app:app",
		"gunicorn app:app || echo down":                "gunicorn app:app",
		"pm2-runtime start server.js -i 2":             "pm2-runtime server.js -i 2",
		"concurrently 'node a.js' 'node b.js'":         "node a.js",
		"concurrently -k -n a,b 'npm:a*'":              "unknown",
		"$START_COMMAND":                               "unknown",
		"":                                             "unknown",
		"npm run dev":                                  "tsx src/server.ts",
		"sh background/run.sh":                         "node server.js",
		"/usr/local/bin/node server.js":                "node server.js",
		"yarn workspace @dome/api start":               "api: node server.js",
		"yarn workspace @dome/api run start":           "api: node server.js",
		"yarn workspace @dome/elsewhere start":         "unknown",
		"npm start --workspace=@dome/api":              "api: node server.js",
		"npm run start -w api -- --quiet":              "api: node server.js --quiet",
		"npm --workspace @dome/api run start":          "api: node server.js",
		"npm start --silent":                           "node server.js",
		"pnpm --filter @dome/api start":                "api: node server.js",
		"pnpm --filter=@dome/api... run start":         "api: node server.js",
		"pnpm -r --filter './api' start":               "api: node server.js",
		"bun run --filter @dome/api start":             "api: node server.js",
		"yarn --cwd api start":                         "api: node server.js",
		"npm --prefix=api start":                       "api: node server.js",
	} {
		line, err := command.Parse(cmd, place.Span{File: "Procfile", Line: 1, Col: 6})
		if err != nil {
			t.Errorf("%s: %v", cmd, err)
			continue
		}
		f := command.Follow(line, command.Context{Tree: tr, Scripts: func(dir, name string) (command.Script, bool) {
			if dir == "api" {
				return command.Script{Text: "node server.js", At: place.Span{File: "api/package.json", Line: 2, Col: 5}}, name == "start"
			}
			s, ok := scripts[name]
			return command.Script{Text: s, At: place.Span{File: "package.json", Line: 3, Col: 5}}, ok
		}, Workspace: func(name string) (string, bool) { return "api", name == "@dome/api" }})
		if got := summary(f); got != want {
			t.Errorf("%s\n\tends at %q\n\tnot     %q (%s)", cmd, got, want, f.Reason)
		}
	}
}

func TestWhatIsOnTheWay(t *testing.T) {
	tr := tree(t, map[string]string{"server.js": ""})
	follow := func(cmd string) command.Final {
		line, err := command.Parse(cmd, place.Span{File: "Procfile", Line: 1, Col: 6})
		if err != nil {
			t.Fatal(err)
		}
		return command.Follow(line, command.Context{Tree: tr, Scripts: func(_, name string) (command.Script, bool) {
			s, ok := scripts[name]
			return command.Script{Text: s, At: place.Span{File: "package.json", Line: 3, Col: 5}}, ok
		}})
	}
	f := follow("npm start")
	if len(f.Before) != 1 || f.Before[0].Program != "tsc" {
		t.Errorf("the pre-script is not seen: %v", f.Before)
	}
	if f.At.File != "package.json" || f.At.Line != 3 || f.At.Col != 5 {
		t.Errorf("the program stands at %s", f.At)
	}
	if len(f.Steps) != 1 || !strings.Contains(f.Steps[0].Note, "start") {
		t.Errorf("the steps are %v", f.Steps)
	}
	if f := follow("npm run serve"); len(f.Wrapped) != 1 || f.Wrapped[0].Name != "cross-env" {
		t.Errorf("what wraps the program is %v", f.Wrapped)
	}
	if f := follow("npm run dev"); f.Manager != "nodemon" {
		t.Errorf("the manager is %q", f.Manager)
	}
	if f := follow("node --watch server.js"); f.Watching == nil || f.Watching.Text != "--watch" || f.Watching.At.Col != 11 {
		t.Errorf("a flag that watches is not seen: %+v", f.Watching)
	}
	if f := follow("node server.js --watch"); f.Watching != nil {
		t.Error("a flag for the program is taken for one of node")
	}
	if f := follow("npx tsx server.js"); !f.Fetched {
		t.Error("npx fetches what is not there")
	}
	if f := follow("node server.js &"); !f.Back {
		t.Error("a command in the background is not seen")
	}
}

func TestFlags(t *testing.T) {
	for _, c := range []struct{ cmd, flags, want string }{
		{"gunicorn -b 0.0.0.0:80 app:app", "-b --bind", "0.0.0.0:80"},
		{"gunicorn --bind=0.0.0.0:80 app:app", "-b --bind", "0.0.0.0:80"},
		{"gunicorn -b:80 app:app", "-b --bind", ":80"},
		{"gunicorn -b a:1 --bind b:2 app:app", "-b --bind", "a:1 b:2"},
		{"gunicorn app:app -b $HOST:$PORT", "-b --bind", "$HOST:$PORT"},
		{"gunicorn app:app --bind \"0.0.0.0:${PORT:-80}\"", "-b --bind", "\"0.0.0.0:${PORT:-80}\""},
		{"uvicorn app:app --port", "--port", "(none)"},
		{"gunicorn app:app -- -b x", "-b", ""},
		{"uvicorn app:app --portable 1", "--port", ""},
	} {
		line, err := command.Parse(c.cmd, place.Span{File: "Procfile", Line: 1, Col: 1})
		if err != nil {
			t.Fatal(err)
		}
		f := command.Follow(line, command.Context{})
		var got []string
		for _, w := range f.Flags(strings.Fields(c.flags)...) {
			if w.Value == nil {
				got = append(got, "(none)")
				continue
			}
			got = append(got, w.Text)
		}
		if s := strings.Join(got, " "); s != c.want {
			t.Errorf("%s: %s are %q, not %q", c.cmd, c.flags, s, c.want)
		}
	}
}

func TestBranchesOfAScript(t *testing.T) {
	for script, want := range map[string]string{
		"if [ \"$SKY\" = dark ]; then exec gunicorn app:app; else exec flask run; fi":           "unknown",
		"if [ \"$SKY\" = dark ]; then exec flask run; fi; exec gunicorn app:app":                "gunicorn app:app",
		"if [ \"$SKY\" = dark ]; then python manage.py migrate; else exec gunicorn app:app; fi": "gunicorn app:app",
		"case $1 in a) exec uvicorn a:a ;; *) exec gunicorn app:app ;; esac":                    "unknown",
		"if [ \"$SKY\" ]; then exec gunicorn app:app -w 4; else exec gunicorn app:app; fi":      "gunicorn app:app",
		"if [ \"$SKY\" ]; then if test -f x; then node seed.js; fi; exec gunicorn app:app; fi":  "gunicorn app:app",
		"serve() { exec gunicorn app:app; }; [ -d static ] || mkdir static; serve":              "gunicorn app:app",
		"a() { a; }; a; exec gunicorn app:app":                                                  "gunicorn app:app",
		"a() { b; b; }; b() { a; a; }; a":                                                       "unknown",
		"[ -d static ] || python manage.py collectstatic --noinput; exec gunicorn app:app":      "gunicorn app:app",
	} {
		line, err := command.Parse(script, place.Span{File: "f", Line: 1, Col: 1})
		if err != nil {
			t.Fatal(err)
		}
		if got := summary(command.Follow(line, command.Context{Tree: tree(t, map[string]string{"manage.py": ""})})); got != want {
			t.Errorf("%s\n\tends at %q, not %q", script, got, want)
		}
	}
	for _, c := range []struct{ script, env, want string }{
		{"if [ -z \"$PORT\" ]; then PORT=80; fi", "", "80"},
		{"if [ -z \"$PORT\" ]; then PORT=80; fi", "PORT=5", "5"},
		{"[ -n \"$PORT\" ] || PORT=80", "PORT=5", "5"},
		{"PORT=${ADDR##*:}", "ADDR=dome:80", "80"},
		{"PORT=${ADDR%:*}", "ADDR=80:x:y", "80:x"},
		{"PORT=${ADDR%%:*}", "ADDR=80:x:y", "80"},
		{"PORT=${ADDR/dome/8}0", "ADDR=dome", "80"},
		{"PORT=${ADDR:1:2}", "ADDR=x80y", "80"},
		{"PORT=${#ADDR}", "ADDR=night", "5"},
		{"PORT=${ADDR:+80}", "ADDR=x", "80"},
		{"PORT=${ADDR:+80}", "", ""},
		{"PORT=$(echo \"$ADDR\" | cut -d: -f2)", "ADDR=dome:80", "80"},
		{"name() { echo \"${1:-80}\"; }\nPORT=$(name \"$ADDR\")", "", "80"},
		{"name() { if [ -n \"$1\" ]; then echo \"$1\"; else echo 80; fi; }\nPORT=$(name \"$ADDR\")", "ADDR=8", "8"},
		{"name() { [ -n \"$1\" ] && echo \"$1\" && return; echo 80; }\nPORT=$(name \"$ADDR\")", "", "unknown"},
		{"list=(1 80)\nPORT=${list[1]}", "", "80"},
		{"if [ \"$A\" ] && [ \"$B\" = x ]; then PORT=1; else PORT=2; fi", "A=1,B=x", "2"},
		{"if [[ $A == dome* || $A =~ ^sky[0-9]+$ ]]; then PORT=1; else PORT=2; fi", "A=sky7", "1"},
		{"if [ \"$A\" -gt 9 ]; then PORT=1; else PORT=2; fi", "A=10", "1"},
		{"i=0\nwhile [ $i -lt 3 ]; do i=$((i + 1)); done\nPORT=8$i", "", "83"},
		{"[[ -z $PORT ]] && export PORT=80", "", "80"},
		{"[[ -z $PORT ]] && export PORT=80", "PORT=5", "5"},
		{"if [ \"$SKY\" = clear ]; then PORT=1; elif [ \"$SKY\" != dark ]; then PORT=2; else PORT=3; fi", "SKY=clear", "1"},
		{"if [ \"$SKY\" = clear ]; then PORT=1; elif [ \"$SKY\" != dark ]; then PORT=2; else PORT=3; fi", "SKY=dark", "3"},
		{"if [ \"$SKY\" = clear ]; then PORT=1; elif [ \"$SKY\" != dark ]; then PORT=2; else PORT=3; fi", "", "2"},
		{"case $SKY in clear|bright) PORT=1 ;; *) PORT=2 ;; esac", "SKY=bright", "1"},
		{"case $SKY in clear|bright) PORT=1 ;; *) PORT=2 ;; esac", "SKY=dark", "2"},
		{"case $SKY in cl*) PORT=1 ;; *) PORT=2 ;; esac", "SKY=clear", "1"},
		{"if ! [ \"$SKY\" ]; then PORT=1; else PORT=2; fi", "SKY=x", "2"},
		{"if test -f settings; then PORT=1; fi", "PORT=5", "unknown"},
		{"for p in 1 2; do PORT=$p; done", "PORT=5", "2"},
		{"test -d x || PORT=1", "PORT=5", "unknown"},
		{"if [ -z \"$PORT\" ]; then echo none; fi", "PORT=5", "5"},
		{"PORT=1 && PORT=2", "", "2"},
		{"[ -f settings ] && PORT=1", "PORT=5", "unknown"},
	} {
		line, err := command.Parse(c.script+"; exec serve $PORT", place.Span{File: "f", Line: 1, Col: 1})
		if err != nil {
			t.Fatal(err)
		}
		env := map[string]string{}
		if k, v, ok := strings.Cut(c.env, "="); ok {
			env[k] = v
		}
		last := line.Commands[len(line.Commands)-1]
		o := last.Words[len(last.Words)-1].Value.Under(value.Environ{Set: env})
		got := o.Text
		if !o.Known() {
			got = "unknown"
		}
		if got != c.want {
			t.Errorf("%s under %q gives %q, not %q", c.script, c.env, got, c.want)
		}
	}
}

func TestWords(t *testing.T) {
	for _, c := range []struct{ text, env, want string }{
		{`$PORT`, "PORT=1", "1"},
		{`$PORT`, "", ""},
		{`${PORT:-80}`, "PORT=", "80"},
		{`${PORT-80}`, "PORT=", ""},
		{`"0.0.0.0:${PORT:=80}"`, "", "0.0.0.0:80"},
		{`'$PORT'`, "PORT=1", "$PORT"},
		{`\$PORT`, "PORT=1", "$PORT"},
		{`a"b"'c'`, "", "abc"},
		{`${A:-${B:-c}}`, "", "c"},
	} {
		line, err := command.Parse("x "+c.text, place.Span{File: "f", Line: 1, Col: 1})
		if err != nil {
			t.Fatal(err)
		}
		w := line.Commands[0].Words[1]
		env := map[string]string{}
		if k, v, ok := strings.Cut(c.env, "="); ok {
			env[k] = v
		}
		if got := w.Value.Under(value.Environ{Set: env}).Text; got != c.want {
			t.Errorf("%s under %q comes to %q, not %q", c.text, c.env, got, c.want)
		}
	}
	line, _ := command.Parse("x ${PORT:?must be set}", place.Span{})
	if o := line.Commands[0].Words[1].Value.Under(value.Environ{}); !o.Raise {
		t.Error("a variable that must be set does not end the command")
	}
	if _, err := command.Parse("x '", place.Span{}); err == nil {
		t.Error("an open quote is no error")
	}
	if _, err := command.Parse(strings.Repeat("a", 1<<17), place.Span{}); err == nil {
		t.Error("a command of 128 KiB is read")
	}
}

func TestExecForm(t *testing.T) {
	at := place.Span{File: "Dockerfile", Line: 4, Col: 6}
	f := command.Follow(command.ParseExec([]string{"gunicorn", "-b", "0.0.0.0:$PORT", "app:app"}, []place.Span{at, at, at, at}), command.Context{})
	if !f.Exec || f.Program != "gunicorn" {
		t.Errorf("the exec form ends at %s", summary(f))
	}
	w, ok, _ := f.Flag("-b")
	if !ok || !w.Single || w.Value.Under(value.Environ{Set: map[string]string{"PORT": "1"}}).Text != "0.0.0.0:$PORT" {
		t.Errorf("no shell expands an exec form, and %q was", w.Text)
	}
	if g := command.Follow(command.ParseExec([]string{"sh", "-c", "exec node $FILE"}, []place.Span{at, at, at}), command.Context{}); g.Exec || g.Program != "node" {
		t.Error("the shell in an exec form does expand")
	}
}

func TestKnownPrograms(t *testing.T) {
	for name, want := range map[string]string{"python3.13": "python", "nodejs": "node", "node20": "node", "pythonic": "", "uvicorn": "uvicorn", "nodemon": "nodemon"} {
		got := ""
		if p := command.Lookup(name); p != nil {
			got = p.Name
		}
		if got != want {
			t.Errorf("%s is %q, not %q", name, got, want)
		}
	}
}

func FuzzParse(f *testing.F) {
	f.Add("()0")
	f.Add("f() { f; g; }; if [ -z \"$A\" ]; then A=1; fi; case $A in b) f ;; esac")
	for _, s := range []string{"a && b || c", "x=$(y) z ${a:-b} 'c' \"d\"", "if a; then b; fi", "sh -c 'sh -c \"a\"'"} {
		f.Add(s)
	}
	tr := tree(f, map[string]string{"run.sh": "node server.js\n"})
	f.Fuzz(func(t *testing.T, text string) {
		line, err := command.Parse(text, place.Span{File: "f", Line: 1, Col: 1})
		if err != nil {
			return
		}
		final := command.Follow(line, command.Context{Tree: tr})
		final.Free()
		final.Flags("-b", "--bind")
	})
}

func TestScriptsThatRunThemselves(t *testing.T) {
	t.Parallel()
	tr := tree(t, map[string]string{
		"again.sh":  "#!/bin/sh\nsh again.sh & sh again.sh & sh again.sh &\nsh again.sh\n",
		"server.js": "",
	})
	for _, text := range []string{"sh again.sh", "concurrently 'sh again.sh' 'sh again.sh'"} {
		line, err := command.Parse(text, place.Span{File: "Procfile", Line: 1, Col: 6})
		if err != nil {
			t.Fatal(err)
		}
		began := time.Now()
		f := command.Follow(line, command.Context{Tree: tr})
		if took := time.Since(began); f.Reason == "" || took > 20*time.Second {
			t.Errorf("%s: %q after %v", text, f.Reason, took)
		}
	}
}
