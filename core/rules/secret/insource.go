package secret

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/rules"
	"ubique/core/survey"
)

var inSource = &rules.Rule{
	ID: "secret/in-source", Level: rules.Risk, Title: "a secret is written in the source", Doc: doc("in-source"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Code == nil {
				continue
			}
		secrets:
			for _, s := range on.Code.Secrets {
				for _, g := range s.Guards {
					if yes, ok := g.Under(on.Ported).Truth(false); ok && !yes {
						continue secrets // a branch that does not run here
					}
				}
				if survey.IsTest(s.At.File) || survey.Elsewhere(path.Dir(s.At.File)) && path.Dir(s.At.File) != "." {
					continue
				}
				f := rules.Finding{Where: s.At}
				variable := envName(s.Name)
				if s.Fallback {
					f.Message = fmt.Sprintf("%s falls back to a value that is written here: where the variable is not set, everybody who reads the source knows it", s.Name)
				} else {
					f.Message = fmt.Sprintf("%s is written in the source: everybody who reads it knows it, and it cannot be changed without a new release", s.Name)
				}
				if strings.HasSuffix(s.At.File, ".py") {
					f.Remedy = fmt.Sprintf(`os.environ["%s"]`, variable)
				} else {
					f.Remedy = "process.env." + variable
				}
				p.Report(on, 0, f)
			}
		}
	},
}

// envName turns a name into the name of a variable: jwtSecret, JWT_SECRET.
func envName(name string) string {
	var b strings.Builder
	for i, r := range name {
		switch {
		case r == '-' || r == '.' || r == ' ':
			b.WriteByte('_')
			continue
		case r >= 'A' && r <= 'Z' && i > 0 && name[i-1] >= 'a' && name[i-1] <= 'z':
			b.WriteByte('_')
		}
		b.WriteRune(r)
	}
	s := strings.ToUpper(b.String())
	if s == "SECRET" {
		return "SESSION_SECRET"
	}
	return s
}
