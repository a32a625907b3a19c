package env

import (
	"fmt"
	"strings"

	"ubique/core/rules"
	"ubique/core/survey"
)

var invalidName = &rules.Rule{
	ID: "env/invalid-name", Level: rules.Risk, Title: "a name that no variable can have", Doc: doc("invalid-name"),
	Check: func(p *rules.Pass) {
		said := map[string]bool{}
		for _, d := range p.Component.Declared {
			if d.Valid || d.How == "start command" || strings.ContainsAny(d.Name, "${<") {
				continue
			}
			said[d.Name] = true
			p.ReportAll(0, rules.Finding{Where: d.At, Message: fmt.Sprintf("%q is no name of a variable: a shell cannot set it, and most hosts refuse it", d.Name), Remedy: valid(d.Name)})
		}
		for _, on := range p.On {
			names, at := written(on)
			for _, n := range names {
				if n == "" || said[n] || survey.ValidName(n) || strings.ContainsAny(n, "()${") {
					continue
				}
				p.Report(on, 0, rules.Finding{Where: at[n][0].At, Message: fmt.Sprintf("reads %q, which is no name of a variable: a shell cannot set it, and most hosts refuse it", n), Remedy: valid(n)})
			}
		}
	},
}

// valid makes a name of what was meant as one.
func valid(s string) string {
	var b strings.Builder
	for _, r := range strings.ToUpper(s) {
		if r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' {
			b.WriteRune(r)
		} else if b.Len() > 0 && !strings.HasSuffix(b.String(), "_") {
			b.WriteByte('_')
		}
	}
	t := strings.TrimRight(b.String(), "_")
	if t == "" || t[0] >= '0' && t[0] <= '9' {
		t = "X_" + t
	}
	return t
}
