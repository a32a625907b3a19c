package port

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
)

var literal = &rules.Rule{
	ID: "port/literal", Level: rules.Blocker, Title: "a fixed port where the host gives one", Doc: doc("literal"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			v := judge(on)
			if v.rule != "port/literal" {
				continue
			}
			l := v.listener
			name := on.Host.Port.Variable
			f := rules.Finding{Where: where(on, l), Trail: trail(l, portValue(l))}
			switch {
			case l.Via == "default":
				f.Where = l.At
				f.Message = fmt.Sprintf("%s gets no port and listens on its default, %d; the host gives the port in %s", program(on), v.outcome.Port, name)
			case l.Via == "flag":
				f.Message = fmt.Sprintf("%s is told to listen on %d; the host gives the port in %s, new at each boot", program(on), v.outcome.Port, name)
			case v.outcome.Port == 0:
				f.Message = fmt.Sprintf("the port is left to the kernel; the host gives it in %s", name)
			default:
				f.Message = fmt.Sprintf("listens on %d whatever %s says; the host gives the port in %s, new at each boot", v.outcome.Port, name, name)
			}
			f.Remedy = remedy(on, v, name)
			if gone := takes(on, name); gone != nil && asks(on, l, name) {
				f.Where, f.Trail = gone.At, nil
				f.Message = fmt.Sprintf("takes %s out of the environment, and %s listens on %d; the host gives the port in %s, new at each boot", name, program(on), v.outcome.Port, name)
				f.Remedy = "the command with " + name + " left in the environment"
			}
			if at := beaten(p.Tree, on, name, v.outcome.Port); at.Line > 0 && asks(on, l, name) {
				f.Where, f.Trail = at, nil
				f.Message = fmt.Sprintf("%s of this file beats that of the environment, and %s listens on %d; the host gives the port in %s, new at each boot", name, program(on), v.outcome.Port, name)
				f.Remedy = at.File + " without " + name
			}
			p.Report(on, 0, led(l, f))
		}
	},
}

// takes is the place at which the command takes a variable out of the environment; nil
// where it does not.
func takes(on *rules.On, name string) (gone *command.Assign) {
	if on.Start == nil {
		return nil
	}
	for _, a := range on.Start.Final.Env {
		switch {
		case a.Gone && (a.Name == "" || a.Name == name):
			gone = &a
		case a.Name == name:
			gone = nil
		}
	}
	return gone
}

// beaten is the place at which a dotenv file that ships sets a variable to a number and
// beats the environment; without a line where none does.
func beaten(t *source.Tree, on *rules.On, name string, number int) (at place.Span) {
	for _, d := range on.Code.Dotenv {
		file := d.Path
		if d.By != nil && on.Code.Program != nil {
			file, _ = on.Code.Program.PathUnder(d.By, on.Env)
		}
		if !d.Over || file == "" || t.State(file) != source.Shipped {
			continue
		}
		f, err := t.Code(file)
		if err != nil {
			continue
		}
		for _, k := range document.Dotenv(file, f.Data, f.Lines()).Kids {
			if k.Key == name && k.Text == strconv.Itoa(number) {
				at = k.KeyAt()
			}
		}
	}
	return at
}

// asks reports whether what is started would look at a variable that stands in the
// environment: its code reads it, or its server does by itself.
func asks(on *rules.On, l *fact.Listener, name string) bool {
	s := fact.Servers[l.Server]
	for own := range strings.FieldsSeq(s.PortEnv + " " + s.PortEnvs + " " + s.Over) {
		if own == name {
			return true
		}
	}
	return slices.ContainsFunc(on.Code.Variables, func(v fact.Variable) bool { return v.Name == name })
}

// program is the name of what is started, for messages.
func program(on *rules.On) string {
	if on.Code != nil && on.Code.Final.Program != "" {
		return on.Code.Final.Program
	}
	return "the program"
}

// remedy is what to write instead, in the words of the program or language.
func remedy(on *rules.On, v verdict, name string) string {
	l := v.listener
	if l.Via == "code" || l.Via == "setting" {
		number := v.outcome.Port
		if number == on.Port {
			number = 0
		}
		return read(where(on, l).File, l, name, number)
	}
	switch l.Server {
	case "gunicorn", "hypercorn":
		return "--bind 0.0.0.0:$" + name
	case "aiohttp.web":
		return "-H 0.0.0.0 -P $" + name
	case "daphne":
		return "-b 0.0.0.0 -p $" + name
	case "waitress-serve":
		return "--port=$" + name
	case "http.server":
		return "python -m http.server $" + name
	case "next":
		return "next start -p $" + name
	case "php -S":
		return "php -S 0.0.0.0:$" + name
	case "puma":
		return "puma -p $" + name
	case "rackup":
		return "rackup -o 0.0.0.0 -p $" + name
	case "spring":
		return "-Dserver.port=$" + name
	case "quarkus":
		return "-Dquarkus.http.port=$" + name
	}
	return "--host 0.0.0.0 --port $" + name
}
