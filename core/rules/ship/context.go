package ship

import (
	"strings"

	"github.com/moby/patternmatcher"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/source"
)

// contextRules are the rules of a build context's ignore file.
type contextRules struct {
	lines   []document.Line
	matcher *patternmatcher.PatternMatcher
}

func newContextRules(t *source.Tree, name string) contextRules {
	if !t.Has(name) {
		return contextRules{}
	}
	f, err := t.Code(name)
	if err != nil {
		return contextRules{}
	}
	r := contextRules{lines: document.PlainLines(name, f.Data, f.Lines())}
	r.matcher, err = patternmatcher.New(patterns(r.lines))
	if err != nil {
		return contextRules{}
	}
	return r
}

func patterns(lines []document.Line) []string {
	var list []string
	for _, l := range lines {
		p := l.Text
		not := strings.HasPrefix(p, "!")
		p = strings.TrimPrefix(strings.TrimPrefix(p, "!"), "/")
		if not {
			p = "!" + p
		}
		list = append(list, p)
	}
	return list
}

// excludes gives the rule that keeps a path of the context out.
func (r contextRules) excludes(p string) (at place.Span, out bool) {
	if r.matcher == nil {
		return at, false
	}
	if out, err := r.matcher.MatchesOrParentMatches(p); err != nil || !out {
		return at, false
	}
	for i := len(r.lines) - 1; i >= 0; i-- {
		m, err := patternmatcher.New(patterns(r.lines[i : i+1]))
		if err != nil {
			continue
		}
		if ok, err := m.MatchesOrParentMatches(p); err == nil && ok {
			return r.lines[i].At, true
		}
	}
	return r.lines[0].At, true
}
