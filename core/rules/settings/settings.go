// Package settings holds the rules on production settings.
package settings

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

// Rules of the family, in order.
var Rules = []*rules.Rule{debug, hostsOpen, hostsEmpty}

// each goes through the settings of the starts that count on the hosts.
func each(p *rules.Pass, names []string, look func(on *rules.On, s fact.Setting)) {
	for _, on := range p.On {
		if on.Code == nil {
			continue
		}
		for _, s := range on.Code.Settings {
			if slices.Contains(names, s.Name) {
				look(on, s)
			}
		}
	}
}

// trail leads from the production module to an inherited value.
func trail(s fact.Setting) []value.Step {
	var list []value.Step
	for _, st := range s.Value.Trail() {
		if st.At.File != s.At.File || st.At.Line != s.At.Line {
			list = append(list, st)
		}
	}
	return list
}

var debug = &rules.Rule{
	ID: "settings/debug", Level: rules.Risk, Title: "debugging is on", Doc: doc("debug"),
	Check: func(p *rules.Pass) {
		each(p, []string{"DEBUG", "debug", "FLASK_DEBUG", "FLASK_ENV"}, func(on *rules.On, s fact.Setting) {
			out := s.Value.Under(on.Ported)
			yes, ok := out.Truth(true)
			switch s.Name {
			case "FLASK_DEBUG":
				yes = out.Text != "" && out.Text != "0" && !strings.EqualFold(out.Text, "false") && !strings.EqualFold(out.Text, "no")
			case "FLASK_ENV":
				yes = out.Text == "development"
			}
			if !ok || !yes || out.Raise || out.Kind == value.External {
				return
			}
			f := rules.Finding{Where: s.At, Trail: trail(s), Message: fmt.Sprintf("%s is on (%s): errors show source, settings and the environment to everybody", s.Name, s.Framework)}
			vars := s.Value.Variables()
			if len(vars) > 0 {
				f.Message = fmt.Sprintf("%s is on where %s is not set (%s): errors show source, settings and the environment to everybody", s.Name, vars[0].Text, s.Framework)
			}
			if out.Kind == value.Str && s.Name == "DEBUG" {
				f.Message = fmt.Sprintf("DEBUG is the text %q, and every text that is not empty counts as on (%s)", out.Text, s.Framework)
			}
			switch {
			case s.Name == "FLASK_DEBUG" || s.Name == "FLASK_ENV":
				f.Remedy = "the variable left out"
			case s.Name == "debug":
				f.Remedy = "debug left out"
			case len(vars) > 0:
				f.Remedy = fmt.Sprintf(`DEBUG = os.environ.get("%s", "") == "1"`, vars[0].Text)
			default:
				f.Remedy = `DEBUG = os.environ.get("DEBUG", "") == "1"`
			}
			p.Report(on, 0, f)
		})
	},
}

// texts gives the entries of a list of hosts; ok is false when it cannot be
// told.
func texts(o value.Outcome) ([]string, bool) {
	if o.Kind == value.Str {
		return []string{o.Text}, true
	}
	if o.Kind != value.List {
		return nil, false
	}
	var list []string
	for _, x := range o.List {
		if x.Kind != value.Str {
			return nil, false
		}
		list = append(list, x.Text)
	}
	return list, true
}

var hostsOpen = &rules.Rule{
	ID: "settings/hosts-open", Level: rules.Risk, Title: "every host name is accepted", Doc: doc("hosts-open"),
	Check: func(p *rules.Pass) {
		each(p, []string{"ALLOWED_HOSTS", "allowed_hosts"}, func(on *rules.On, s fact.Setting) {
			list, ok := texts(s.Value.Under(on.Ported))
			if !ok || !slices.Contains(list, "*") {
				return
			}
			f := rules.Finding{Where: s.At, Trail: trail(s), Message: fmt.Sprintf("%s accepts every host name: links that the application makes can be led to another site", s.Name), Remedy: `ALLOWED_HOSTS = os.environ["ALLOWED_HOSTS"].split(",")`}
			if s.Name == "allowed_hosts" {
				f.Remedy = `allowed_hosts=["the.public.name"]`
			}
			p.Report(on, 0, f)
		})
	},
}

var hostsEmpty = &rules.Rule{
	ID: "settings/hosts-empty", Level: rules.Blocker, Title: "no public host name is accepted", Doc: doc("hosts-empty"),
	Check: func(p *rules.Pass) {
		each(p, []string{"ALLOWED_HOSTS"}, func(on *rules.On, s fact.Setting) {
			if s.Framework != "Django" || s.Value.Depends() {
				return // decided by the environment
			}
			list, ok := texts(s.Value.Under(on.Ported))
			if !ok {
				return
			}
			for _, h := range list {
				switch strings.Trim(strings.ToLower(h), "[]. ") {
				case "", "localhost", "127.0.0.1", "::1", "0.0.0.0", "testserver":
				default:
					return
				}
			}
			says := "is empty"
			if len(list) > 0 {
				says = "names only this machine"
			}
			f := rules.Finding{Where: s.At, Trail: trail(s), Message: fmt.Sprintf("ALLOWED_HOSTS %s: Django answers every request under the public name with 400 Bad Request", says), Remedy: `ALLOWED_HOSTS = os.environ["ALLOWED_HOSTS"].split(",")`}
			p.Report(on, 0, f)
		})
	},
}
