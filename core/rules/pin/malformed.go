package pin

import (
	"fmt"

	"ubique/core/rules"
	"ubique/core/survey"
)

var malformed = &rules.Rule{
	ID: "pin/malformed", Level: rules.Risk, Title: "a version that is not in the form that is read", Doc: doc("malformed"),
	Check: func(p *rules.Pass) {
		for _, x := range p.Component.Pins {
			if x.Wrong == "" {
				continue
			}
			f := rules.Finding{
				Where:   x.At,
				Message: fmt.Sprintf("%s has %q, and %s", name(x.From, x.At.File), x.Text, x.Wrong),
				Remedy:  written(x, advised(p.Component, x.What, p.Today, x)),
			}
			if n := leading(x.Text); n != "" && x.Rank == survey.RankFile {
				f.Remedy = written(x, n)
			} else if x.Rank == survey.RankCI {
				f.Remedy = x.Form
			}
			for _, on := range p.On {
				if on.Host.Route != "image" { // the container's base is the pin there
					p.Report(on, 0, f)
				}
			}
		}
	},
}

// name says where a pin stands: the file where it is a version file.
func name(from, file string) string {
	if from == "CI" {
		return file
	}
	return from
}

// leading gives the numbers of a version out of a text around them.
func leading(s string) string {
	i := 0
	for i < len(s) && (s[i] < '0' || s[i] > '9') {
		i++
	}
	j := i
	for j < len(s) && (s[j] >= '0' && s[j] <= '9' || s[j] == '.' && j+1 < len(s) && s[j+1] >= '0' && s[j+1] <= '9') {
		j++
	}
	return s[i:j]
}
