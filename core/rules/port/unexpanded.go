package port

import (
	"fmt"

	"ubique/core/command"
	"ubique/core/rules"
)

var unexpanded = &rules.Rule{
	ID: "port/unexpanded", Level: rules.Blocker, Title: "the text $PORT reaches the program", Doc: doc("unexpanded"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			for _, w := range on.Start.Final.Args {
				name, ok := variableText(w)
				if !ok {
					continue
				}
				f := rules.Finding{Where: w.At}
				if on.Start.Final.Exec {
					f.Message = fmt.Sprintf("no shell reads this form of the command, so %s gets the text %s and not the port", on.Start.Final.Program, name)
					f.Remedy = `CMD ["sh", "-c", "exec ` + on.Start.Command + `"]`
				} else {
					f.Message = fmt.Sprintf("in single quotes nothing is expanded: %s gets the text %s and not the port", on.Start.Final.Program, name)
					f.Remedy = `"` + w.Text + `"`
				}
				p.Report(on, 0, f)
				break
			}
		}
	},
}

// variableText finds a variable in a word that no shell expands.
func variableText(w command.Word) (string, bool) {
	if !w.Single || !w.Literal() {
		return "", false
	}
	s := w.Text
	for i := 0; i+1 < len(s); i++ {
		if s[i] != '$' {
			continue
		}
		j := i + 1
		if s[j] == '{' {
			j++
		}
		k := j
		for k < len(s) && (s[k] == '_' || s[k] >= 'A' && s[k] <= 'Z' || s[k] >= '0' && s[k] <= '9' || s[k] >= 'a' && s[k] <= 'z') {
			k++
		}
		if k > j && (s[j] < '0' || s[j] > '9') {
			if k < len(s) && s[i+1] == '{' {
				for k < len(s) && s[k] != '}' {
					k++
				}
				k = min(k+1, len(s))
			}
			return s[i:k], true
		}
	}
	return "", false
}
