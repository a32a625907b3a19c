package port

import (
	"fmt"
	"strings"

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
		if name := s[j:k]; k > j && variableName(name, s) {
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

// variableName tells whether a name after a dollar sign is meant as a variable of the
// environment: those are written in capitals (POSIX.1-2017, XBD 8.1). A port in lower
// case is meant so too, but not in a word that is code of a language of its own. The
// dollar in the name of a nested class of Java is none (JLS 13.1).
func variableName(name, word string) bool {
	if name[0] >= '0' && name[0] <= '9' {
		return false
	}
	return name == strings.ToUpper(name) || strings.EqualFold(name, "port") && !strings.ContainsAny(word, " ;")
}
