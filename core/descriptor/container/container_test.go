package container_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"ubique/core/descriptor/container"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/value"
)

func read(text string) *fact.Descriptor {
	return container.Read("Dockerfile", &source.File{Path: "Dockerfile", Data: []byte(text)})
}

func image(t *testing.T, text string) *fact.Image {
	t.Helper()
	d := read(text)
	if d.Err != nil {
		t.Fatalf("%s\n%v", text, d.Err)
	}
	return d.Image
}

func TestBases(t *testing.T) {
	for text, want := range map[string]string{
		"FROM node:24-slim": "node 24-slim final",
		"FROM --platform=linux/amd64 docker.io/library/python:3.13 AS build": "docker.io/library/python 3.13 final",
		"FROM registry.hill.example:5000/dome/base":                          "registry.hill.example:5000/dome/base  final",
		"ARG V=3.13\nFROM python:${V}-slim":                                  "python 3.13-slim final",
		"ARG V\nFROM python:${V:-3.12}":                                      "python 3.12 final",
		"ARG V\nFROM python:$V":                                              "python $V final unknown",
		"FROM node:24 AS a\nFROM python:3.13":                                "node 24|python 3.13 final",
		"FROM node:24 AS a\nFROM a AS b\nFROM b":                             "node 24 final",
		"FROM node:24 AS a\nFROM scratch\nCOPY --from=a /x /y":               "node 24|scratch  final",
		"from node:24": "node 24 final",
		"# syntax=docker/dockerfile:1\n# a comment\n\nFROM node:24": "node 24 final",
		"FROM node@sha256:abc": "node  final",
	} {
		var got []string
		for _, b := range image(t, text).Bases {
			s := b.Name + " " + b.Tag
			if b.Final {
				s += " final"
			}
			if b.Unknown {
				s += " unknown"
			}
			got = append(got, s)
		}
		if s := strings.Join(got, "|"); s != want {
			t.Errorf("%q\nhas the bases %q, not %q", text, s, want)
		}
	}
}

func TestCommands(t *testing.T) {
	for text, want := range map[string]string{
		"CMD node server.js":                                     "shell: node server.js",
		"CMD [\"node\", \"server.js\"]":                          "exec: node server.js",
		"ENTRYPOINT [\"node\"]\nCMD [\"server.js\"]":             "exec: node server.js",
		"ENTRYPOINT node server.js\nCMD [\"x\"]":                 "shell: node server.js",
		"CMD node a.js\nCMD node b.js":                           "shell: node b.js",
		"CMD node \\\n  # a comment\n\n  server.js \\\n  --fast": "shell: node    server.js    --fast",
		"CMD [ \"node\", \\\n  \"server.js\" ]":                  "exec: node server.js",
		"CMD [\"node\", 'server.js']":                            "shell: [\"node\", 'server.js']",
		"CMD [\"node\"]\nENTRYPOINT [\"./entry.sh\"]":            "exec: ./entry.sh",
		"RUN echo CMD x":                                         "none: ",
	} {
		im := image(t, "FROM node:24\n"+text+"\n")
		form := im.Form
		if !im.HasCmd {
			form = "none"
		}
		if got := form + ": " + im.Text; got != want {
			t.Errorf("%q\nstarts %q, not %q", text, got, want)
		}
	}
	d := read("FROM node:24 AS a\nCMD [\"node\", \"a.js\"]\nFROM a\nWORKDIR /x\n")
	if d.Image.Text != "node a.js" || d.Image.WorkDir != "/x" {
		t.Errorf("a stage does not take the command of the one it is built on: %q", d.Image.Text)
	}
	w := image(t, "FROM node:24\nCMD [\"node\", \"server.js\", \"server.js\"]\n").Command.Commands[0].Words
	if w[1].At.Col != 15 || w[2].At.Col != 28 || w[1].At.Line != 2 {
		t.Errorf("the words of the exec form stand at %s and %s", w[1].At, w[2].At)
	}
}

func TestEnvironmentAndPorts(t *testing.T) {
	im := image(t, `FROM python:3.13
ARG LISTEN=8000
ARG UNSET
ENV PORT=$LISTEN HOST="0.0.0.0" NAME='a b'
ENV OLD some text here
ENV BOTH=${HOST}:${PORT} ESC=\$PORT DEF=${NOPE:-d}
EXPOSE $PORT 9090/tcp 53/udp
EXPOSE 8443
`)
	for name, want := range map[string]string{"PORT": "8000", "HOST": "0.0.0.0", "NAME": "a b", "OLD": "some text here", "BOTH": "0.0.0.0:8000", "DEF": "d"} {
		if v := im.Env[name]; v == nil || v.Kind != value.Str || v.Text != want {
			t.Errorf("%s is %v, not %q", name, v, want)
		}
	}
	var ports []string
	for _, e := range im.Expose {
		ports = append(ports, fmt.Sprintf("%d@%d:%d", e.Port, e.At.Line, e.At.Col))
	}
	if s := strings.Join(ports, " "); s != "8000@7:8 9090@7:14 8443@8:8" {
		t.Errorf("the ports are %s", s)
	}
	if at := im.EnvAt["HOST"]; at.Line != 4 || at.Col != 18 {
		t.Errorf("HOST is set at %s", at)
	}
}

func TestHereDocuments(t *testing.T) {
	im := image(t, "FROM python:3.13\nRUN <<EOF\npip install flask\napt-get update\nEOF\nCOPY <<-\"END\" /conf\n\tport = 1\n\tEND\nRUN cat <<A && cat <<B\na\nA\nb\nB\nCMD [\"python\", \"app.py\"]\n")
	if len(im.Runs) != 2 || !strings.Contains(im.Runs[0].Text, "pip install flask") {
		t.Errorf("the here-document is not the command: %+v", im.Runs)
	}
	if im.Text != "python app.py" || im.At.Line != 14 {
		t.Errorf("what follows the here-documents is %q at %s", im.Text, im.At)
	}
	if d := read("FROM a:1\nRUN <<EOF\nnever ends\n"); d.Err == nil || d.Err.At.Line != 2 {
		t.Errorf("a here-document without an end gives %v", d.Err)
	}
}

func TestOtherEscape(t *testing.T) {
	im := image(t, "# escape=`\nFROM node:24\nCMD node `\n  c:\\app\\server.js\n")
	if !strings.HasSuffix(im.Text, `c:\app\server.js`) {
		t.Errorf("with another escape the command is %q", im.Text)
	}
}

func TestWhatCannotBeRead(t *testing.T) {
	for text, line := range map[string]int{"": 1, "# nothing\n": 1, "RUN x\nFROM a\n": 1, "FROM a:1\nCOPPY . .\n": 2, "\n\nENV A=1\n": 3} {
		d := read(text)
		if d.Err == nil || d.Err.At.Line != line {
			t.Errorf("%q gives %v, not an error in line %d", text, d.Err, line)
		}
	}
}

func TestPathsInTheImage(t *testing.T) {
	for _, c := range []struct{ text, path, want string }{
		{"WORKDIR /app\nCOPY . .", "server.js", "server.js"},
		{"WORKDIR /app\nCOPY . /app", "/app/src/a.py", "src/a.py"},
		{"COPY src /srv/src\nWORKDIR /srv", "src/a.py", "src/a.py"},
		{"WORKDIR /srv\nCOPY package.json server.js ./", "server.js", "server.js"},
		{"WORKDIR /srv\nCOPY server.js main.js", "main.js", "server.js"},
		{"WORKDIR /srv\nCOPY app/ ./", "a.py", "app/a.py"},
		{"WORKDIR /a\nWORKDIR b\nCOPY . .", "/a/b/x.js", "x.js"},
		{"COPY --from=build /out /srv", "/srv/x", "(none)"},
		{"WORKDIR /srv", "x.js", "(none)"},
		{"WORKDIR /b\nCOPY . .\nFROM a:1\nWORKDIR /srv\nCOPY --from=0 /b/dist ./", "main.js", "dist/main.js"},
		{"AS build\nWORKDIR /b\nCOPY web ./\nFROM a:1\nWORKDIR /srv\nCOPY --from=build /b/.next ./.next", ".next/x.js", "web/.next/x.js"},
		{"AS base\nWORKDIR /b\nFROM base AS build\nCOPY . .\nFROM base\nCOPY package.json ./\nCOPY --from=build /b/dist ./out", "out/a.js", "dist/a.js"},
		{"AS build\nCOPY a /x\nFROM a:1 AS next\nCOPY --from=build /x /y\nFROM a:1\nCOPY --from=next /y /z", "/z/f.py", "a/f.py"},
		{"AS build\nCOPY a /x\nFROM a:1\nCOPY --from=elsewhere:1 /x /srv", "/srv/f.py", "(none)"},
		{"AS build\nWORKDIR /b\nRUN make\nFROM a:1\nCOPY --from=build /b/x /srv", "/srv/f.py", "(none)"},
		{"WORKDIR /srv\nCOPY old ./\nCOPY new ./", "f.py", "new/f.py"},
		{"WORKDIR /srv\nCOPY app ./app\nCOPY app/special ./app/other", "app/other/x", "app/special/x"},
	} {
		got, ok := container.InTree(image(t, "FROM a:1"+strings.Replace("\n"+c.text+"\n", "\nAS ", " AS ", 1)), c.path)
		if !ok {
			got = "(none)"
		}
		if got != c.want {
			t.Errorf("%q: %s is %s of the tree, not %s", c.text, c.path, got, c.want)
		}
	}
}

func TestRunsKnowTheirEnvironment(t *testing.T) {
	im := image(t, "FROM node:24 AS build\nRUN npm ci\nFROM node:24\nENV NODE_ENV=production\nRUN --mount=type=cache,target=/x npm ci --omit=dev\n")
	i := slices.IndexFunc(im.Runs, func(r fact.Run) bool { return r.Final })
	if i < 0 || im.Runs[i].Env["NODE_ENV"] != "production" || im.Runs[i].Text != "npm ci --omit=dev" {
		t.Errorf("the run of the last stage is %+v", im.Runs)
	}
	if im.Runs[0].Env["NODE_ENV"] != "" {
		t.Error("a stage knows a variable of a later one")
	}
}

func FuzzContainerFile(f *testing.F) {
	f.Add("# escape=`\nFROM a AS b\nENV A=\"b c\" D='e'\nRUN <<EOF\nx\nEOF\nCMD [\"a\"]")
	f.Add("FROM a\nCMD [\"\\\"\", \"\\\\\"]\nCOPY a b /")
	f.Fuzz(func(t *testing.T, text string) {
		d := read(text)
		if d.Err == nil && d.Image == nil {
			t.Fatal("neither an image nor an error")
		}
		if d.Image != nil {
			container.InTree(d.Image, "/a/b")
			container.InTree(d.Image, "c")
		}
	})
}
