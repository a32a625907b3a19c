package start

import (
	"fmt"
	"strings"

	"ubique/core/command"
	"ubique/core/rules"
)

var unreadable = &rules.Rule{
	ID: "start/unreadable", Level: rules.Blocker, Title: "no shell can read the command", Doc: doc("unreadable"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			st := on.Start
			if st == nil || st.Source != "process file" && st.Source != "package script" || strings.Contains(st.Command, "\n") {
				continue
			}
			at, word, ok := command.Misread(st.Command)
			if !ok {
				continue
			}
			x := rules.Finding{Where: st.At, Message: fmt.Sprintf("the shell ends with a syntax error before anything runs: it cannot read %s", st.Command)}
			if word != "" {
				x.Message = fmt.Sprintf("the shell ends with a syntax error before anything runs: %s has signs in it that mean something to the shell", word)
			}
			switch {
			case strings.ContainsAny(word, "()") && !strings.ContainsAny(word, `'"`):
				x.Remedy = strings.Replace(st.Command, word, "'"+word+"'", 1)
			case strings.Count(st.Command, `"`)%2 == 1:
				x.Remedy = st.Command + `"`
			case strings.Count(st.Command, "'")%2 == 1:
				x.Remedy = st.Command + "'"
			}
			if st.Source == "process file" && st.At.Line == st.At.EndLine && st.At.EndCol-st.At.Col == len(st.Command) {
				x.Where.Col += at
				x.Where.EndCol = x.Where.Col + max(1, len(word))
			}
			p.Report(on, 0, x)
		}
	},
}
