package survey

import (
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
)

// leavesOut are words of install commands that leave development dependencies
// out, and omits the settings of the environment that do. Source: the package
// managers' own documentation, 2026-11.
var leavesOut = []string{"--omit=dev", "--omit dev", "--production ", "--only=prod", "--only=production", "--prod ", "-P ", "--no-dev", "--only main", "--only=main", "--without dev", "--without=dev", "npm prune", "--without development", "without 'development", "without \"development", "BUNDLE_WITHOUT=", "workspaces focus --production", "--no-group dev"}

// installWords are how install commands begin.
var installWords = []string{"npm ci", "npm i", "yarn", "pnpm i", "pnpm install", "bun install", "bun i", "pip install", "pip3 install", "poetry install", "pipenv install", "pipenv sync", "uv sync", "uv pip install", "pdm install", "pdm sync", "bundle install", "composer install", "mix deps.get"}

func installs(t string) bool {
	for _, w := range installWords {
		if i := strings.Index(t, w); i >= 0 && !strings.HasPrefix(t[i:], "yarn build") && !strings.HasPrefix(t[i:], "yarn run") {
			return true
		}
	}
	return false
}

// withoutDev reports whether an install command of a container leaves
// development dependencies out.
func withoutDev(c *fact.Component, r fact.Run) bool {
	t := " " + r.Text + " "
	for _, w := range leavesOut {
		if strings.Contains(t, w) {
			return true
		}
	}
	switch c.Runtime {
	case "node":
		return r.Env["NODE_ENV"] == "production" && !strings.Contains(t, "--include=dev") && !strings.Contains(t, "--production=false") && (strings.Contains(t, "npm ") || strings.Contains(t, "yarn"))
	case "python":
		if strings.Contains(t, "pip") && strings.Contains(t, "-r ") {
			return !strings.Contains(t, "dev") && !strings.Contains(t, "test")
		}
		return strings.Contains(t, "pipenv") && !strings.Contains(t, "--dev")
	case "ruby":
		return strings.Contains(r.Env["BUNDLE_WITHOUT"], "development")
	case "elixir":
		return r.Env["MIX_ENV"] == "prod" || strings.Contains(t, "--only prod") || strings.Contains(t, "MIX_ENV=prod")
	}
	return false
}

// buildScript gives the package script that a command of a container builds
// with; empty where it builds with none.
func buildScript(t string) string {
	words := strings.Fields(strings.NewReplacer("&&", " ; ", "[", " ", "]", " ", `"`, " ", ",", " ", ";", " ; ").Replace(t))
	for i, w := range words {
		switch w {
		case "npm", "pnpm", "yarn", "bun":
		default:
			continue
		}
		rest := words[i+1:]
		if len(rest) > 1 && rest[0] == "run" {
			return rest[1]
		}
		if len(rest) > 0 && w != "npm" && strings.HasPrefix(rest[0], "build") {
			return rest[0]
		}
	}
	return ""
}

// InstallOf reads how a container file installs dependencies: whether those
// for development are there when the program runs, and when it is built.
func InstallOf(c *fact.Component, im *fact.Image) fact.Install {
	var in fact.Install
	final := false
	for _, r := range im.Runs {
		final = final || r.Final && installs(r.Text)
	}
	without, with := map[int]bool{}, map[int]bool{}
	inherit := func(state map[int]bool, stage int) bool {
		for s := stage; s >= 0 && s < len(im.Stages); s = im.Stages[s].Parent {
			if state[s] {
				return true
			}
		}
		return false
	}
	at := map[int]fact.Run{}
	for _, r := range im.Runs {
		// One RUN may install and then build.
		for part := range strings.SplitSeq(r.Text, "&&") {
			one := r
			one.Text = strings.TrimSpace(part)
			if installs(one.Text) || strings.Contains(one.Text, "prune") {
				if withoutDev(c, one) {
					without[r.Stage] = true
					if strings.Contains(one.Text, "prune") {
						with[r.Stage] = false
					}
					at[r.Stage] = r
				} else {
					with[r.Stage] = true
				}
			}
			if script := buildScript(one.Text); script != "" && c.Scripts[script].Text != "" && inherit(without, r.Stage) && !inherit(with, r.Stage) && !in.BuildNoDev {
				in.BuildNoDev, in.Build, in.BuildAt = true, script, r.At
			}
		}
	}
	for _, r := range im.Runs {
		if !installs(r.Text) && !strings.Contains(r.Text, "prune") || final && !r.Final {
			continue
		}
		in.Known = true
		if withoutDev(c, r) {
			in.NoDev, in.At = true, r.At
		}
	}
	return in
}

// ScriptPrograms lists the programs that a package script names, through the
// scripts that it runs.
func ScriptPrograms(c *fact.Component, script string) []string {
	var list []string
	seen := map[string]bool{}
	var follow func(name string)
	follow = func(name string) {
		s, ok := c.Scripts[name]
		if !ok || seen[name] {
			return
		}
		seen[name] = true
		line, err := command.Parse(s.Text, s.At)
		if err != nil {
			return
		}
		for _, cmd := range line.Commands {
			words := cmd.Words
			for len(words) > 0 && (words[0].Text == "npx" || words[0].Text == "cross-env" || words[0].Text == "env" || strings.Contains(words[0].Text, "=")) {
				if words[0].Text != "npx" && !strings.Contains(words[0].Text, "=") {
					list = append(list, words[0].Text)
				}
				words = words[1:]
			}
			if len(words) == 0 || !words[0].Literal() {
				continue
			}
			name := command.Base(words[0].Text)
			if (name == "npm" || name == "yarn" || name == "pnpm" || name == "bun") && len(words) > 1 {
				next := words[1].Text
				if next == "run" && len(words) > 2 {
					next = words[2].Text
				}
				follow(next)
				continue
			}
			list = append(list, name)
		}
	}
	follow("pre" + script)
	follow(script)
	follow("post" + script)
	return list
}
