package ship

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

var lineEndings = &rules.Rule{
	ID: "ship/line-endings", Level: rules.Blocker, Title: "a script or a descriptor with carriage returns", Doc: doc("line-endings"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			s := on.Start
			files := map[string]place.Span{}
			var order []string
			add := func(file string, at place.Span) {
				if _, ok := files[file]; !ok && file != "" && p.Tree.Has(file) {
					files[file] = at
					order = append(order, file)
				}
			}
			if s.Source == "process file" {
				add(s.File, s.At)
			}
			for _, st := range s.Final.Steps {
				if strings.HasPrefix(st.Note, "run by ") {
					add(st.At.File, s.At)
				}
			}
			if s.Source == "start script" {
				add(s.File, s.At)
			}
			if t := s.Target; t != nil && t.File != "" && path.Base(t.File) != "package.json" && script(p, t.File) && s.Final.Path == t.Named {
				add(t.File, t.At)
			}
			for _, file := range order {
				got, by := p.Tree.CarriageReturns(file)
				if on.Host.Route == "image" && by != "its lines end in CR LF" {
					got = false
				}
				if !got {
					continue
				}
				what := "the kernel looks for an interpreter whose name ends in a carriage return"
				if file == s.File && s.Source == "process file" {
					what = "the last word of each command ends in a carriage return"
				}
				f := rules.Finding{Where: place.Span{File: file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Message: fmt.Sprintf("%s reaches the host with carriage returns (%s): %s", file, by, what), Remedy: fmt.Sprintf("%s text eol=lf in .gitattributes, and git add --renormalize .", path.Base(file))}
				if at := files[file]; at.File != file {
					f.Trail = []value.Step{{At: at, Note: "runs it"}}
				}
				p.Report(on, 0, f)
			}
		}
	},
}

// script reports whether a file begins with the name of its interpreter.
func script(p *rules.Pass, file string) bool {
	f, err := p.Tree.Code(file)
	return err == nil && strings.HasPrefix(string(f.Data), "#!")
}
