package start

import (
	"fmt"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
)

// detaching says which flags or words make a program go to the background
// (the programs' own help texts, read 2026-11).
var detaching = map[string]string{
	"gunicorn": " -D --daemon ", "uwsgi": " --daemonize -d ", "puma": " -d --daemon ", "unicorn": " -D --daemonize ", "rackup": " -D --daemonize ",
	"rails": " -d --daemon ", "thin": " -d --daemonize ", "celery": " --detach ", "php-fpm": " -D --daemonize ", "sidekiq": " -d --daemon ",
	"hypnotoad": "", "screen": " -d -dm -dmS ", "tmux": " -d ", "start-stop-daemon": " -b --background ", "waitress-serve": "",
}

// managers start programs under themselves and return; the words keep them in
// the foreground.
var managers = map[string]string{
	"pm2": " --no-daemon --attach logs ", "forever": "",
}

// brief are programs that with a word start the application and return, unless a flag
// makes them stay; code behind the other flags, or in a file, may wait (Mix
// documentation, "mix run", 2026-11).
var brief = map[string]struct{ word, stay, code string }{
	"mix": {"run", "--no-halt", " -e -r --eval --require "},
}

// background tells a command that returns at once, and by which word.
func background(c *fact.Component, s *fact.Start) (why string, at place.Span, remedy string) {
	f := s.Final
	words := " "
	for _, a := range f.Args {
		words += a.Text + " "
	}
	if f.Back {
		return fmt.Sprintf("%s is sent to the background and nothing waits for it: the command returns at once, and the host sees an exit", f.Program), f.At, strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(s.Command), "&"))
	}
	if f.Manager != "" {
		stay, ok := managers[f.Manager]
		if !ok {
			return "", at, ""
		}
		for _, w := range strings.Fields(stay) {
			if strings.Contains(words, " "+w+" ") {
				return "", at, ""
			}
		}
		for _, b := range f.Before { // pm2 start x && pm2 logs
			if b.Program == f.Manager {
				return "", at, ""
			}
		}
		remedy = "pm2-runtime " + s.Named()
		if f.Settings != "" {
			remedy = "pm2-runtime " + f.Settings
		}
		if f.Manager == "forever" {
			if !verb(s.Command, "forever", "start") {
				return "", at, "" // forever FILE stays
			}
			remedy = "node " + s.Named()
		}
		return fmt.Sprintf("%s starts the program in the background and returns: the host sees an exit", f.Manager), f.At, remedy
	}
	for _, a := range f.Args {
		flag, _, _ := strings.Cut(a.Text, "=")
		if strings.HasPrefix(flag, "-") && strings.Contains(detaching[f.Program], " "+flag+" ") {
			if f.Program == "tmux" && !strings.Contains(words, " new") {
				continue
			}
			return fmt.Sprintf("%s makes %s go to the background: the command returns at once, and the host sees an exit", a.Text, f.Program), a.At, "the command without " + a.Text
		}
	}
	if b, ok := brief[f.Program]; ok && len(f.Args) > 0 && f.Args[0].Text == b.word && !c.Tasks[b.word] && !strings.Contains(words, " "+b.stay+" ") {
		for _, a := range f.Args[1:] {
			if !a.Literal() || !strings.HasPrefix(a.Text, "-") || strings.Contains(b.code, " "+a.Text+" ") {
				return "", at, ""
			}
		}
		named := f.Program + " " + b.word
		return named + " starts the application and returns: the host sees an exit", f.Args[0].At, named + " " + b.stay
	}
	switch f.Program {
	case "nginx":
		if on, ok := directive(f, "daemon"); ok && on == "off" || strings.Contains(words, " -t ") || strings.Contains(words, " -v ") {
			return "", at, ""
		}
		return "nginx goes to the background by itself: the command returns at once, and the host sees an exit", f.At, `nginx -g "daemon off;"`
	case "apachectl", "apache2ctl", "service", "systemctl":
		if strings.Contains(words, " start ") || strings.Contains(words, " restart ") {
			return fmt.Sprintf("%s starts a service and returns: the host sees an exit", f.Program), f.At, "the program itself, in the foreground"
		}
	case "supervisord":
		if !strings.Contains(words, " -n ") && !strings.Contains(words, " --nodaemon ") && !strings.Contains(words, " -c ") {
			return "supervisord goes to the background by itself: the command returns at once, and the host sees an exit", f.At, "supervisord -n"
		}
	}
	if n := len(f.Args); n > 0 && f.Args[n-1].Text == "daemon" && strings.Contains(f.Path, "/") && s.Target != nil && s.Target.Built { // a release of Elixir
		return "daemon makes the release go to the background: the command returns at once, and the host sees an exit", f.Args[n-1].At, f.Path + " start"
	}
	return "", at, ""
}

// verb reports whether a command gives a program a word first.
func verb(text, program, word string) bool {
	line, err := command.Parse(text, place.Span{})
	if err != nil {
		return false
	}
	for _, c := range line.Commands {
		for i, w := range c.Words {
			if command.Base(w.Text) == program && i+1 < len(c.Words) && c.Words[i+1].Text == word {
				return true
			}
		}
	}
	return false
}

// directive finds `NAME VALUE;` in what nginx is given with -g.
func directive(f command.Final, name string) (string, bool) {
	for _, w := range f.Flags("-g") {
		for part := range strings.SplitSeq(w.Text, ";") {
			if words := strings.Fields(part); len(words) == 2 && words[0] == name {
				return words[1], true
			}
		}
	}
	return "", false
}

var backgrounded = &rules.Rule{
	ID: "start/background", Level: rules.Blocker, Title: "the command returns at once", Doc: doc("background"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Final.Reason != "" && on.Start.Final.Manager == "" {
				continue
			}
			why, at, remedy := background(p.Component, on.Start)
			if why == "" {
				continue
			}
			if p.Component.Runtime != "container" && on.Start.Final.Program == "nginx" && p.Tree.Has(p.Component.Path("nginx.conf")) {
				if f, err := p.Tree.Document(p.Component.Path("nginx.conf")); err == nil && strings.Contains(string(f.Data), "daemon off;") {
					continue
				}
			}
			p.Report(on, 0, rules.Finding{Where: at, Trail: on.Start.Final.Steps, Message: why, Remedy: remedy})
		}
	},
}
