package port

import (
	"fmt"

	"ubique/core/rules"
)

var nameCase = &rules.Rule{
	ID: "port/name-case", Level: rules.Blocker, Title: "the port variable's name differs in letter case", Doc: doc("name-case"),
	Check: func(p *rules.Pass) { misnamed(p, "port/name-case") },
}

// misnamed reports a port that is read from a variable which the host does
// not set.
func misnamed(p *rules.Pass, rule string) {
	for _, on := range p.On {
		v := judge(on)
		if v.rule != rule {
			continue
		}
		name := on.Host.Port.Variable
		at := v.variable.At
		if at.Line == 0 {
			at = v.listener.PortAt
		}
		f := rules.Finding{Where: at, Remedy: name, Trail: trail(v.listener, portValue(v.listener))}
		then := then(v)
		if rule == "port/name-case" {
			f.Message = fmt.Sprintf("reads the port from %s; the host sets %s, and names differ by letter case%s", v.variable.Text, name, then)
		} else {
			f.Message = fmt.Sprintf("reads the port from %s; the host sets %s%s", v.variable.Text, name, then)
		}
		f.Remedy = instead(v, name)
		p.Report(on, 0, led(v.listener, f))
	}
}

// then says what comes of a variable that is not set.
func then(v verdict) string {
	switch {
	case v.outcome.Outcome == "exits":
		return ": the program ends at start"
	case v.outcome.Outcome == "listens" && v.outcome.Port == 0:
		return ": it listens on a port that nobody knows"
	case v.outcome.Outcome == "listens":
		return fmt.Sprintf(": it falls back to %d", v.outcome.Port)
	}
	return ""
}

func instead(v verdict, name string) string {
	if v.listener.Via == "flag" {
		return "$" + name
	}
	number := 0
	if v.outcome.Outcome == "listens" {
		number = v.outcome.Port
	}
	file := v.variable.At.File
	if v.variable.At.Line == 0 {
		file = v.listener.PortAt.File
	}
	return read(file, v.listener, name, number)
}
