package settings

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

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
