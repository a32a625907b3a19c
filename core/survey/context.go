package survey

import (
	"path"
	"strings"

	"github.com/moby/patternmatcher"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
)

// Context is the build context of a container file: a folder less what its
// ignore file keeps out, after the reference matcher (moby/patternmatcher).
type Context struct {
	File    string // the ignore file, also where it is not there
	lines   []document.Line
	matcher *patternmatcher.PatternMatcher
	root    string
}

// NewContext reads the ignore file of a container file's context: the one of
// its own name before the one of the folder.
func NewContext(t *source.Tree, containerFile string, im *fact.Image) Context {
	c := Context{File: path.Join(im.Context, ".dockerignore"), root: im.Context}
	if own := containerFile + ".dockerignore"; t.Has(own) {
		c.File = own
	}
	if !t.Has(c.File) {
		return c
	}
	f, err := t.Code(c.File)
	if err != nil {
		return c
	}
	c.lines = document.PlainLines(c.File, f.Data, f.Lines())
	if m, err := patternmatcher.New(contextPatterns(c.lines)); err == nil {
		c.matcher = m
	}
	return c
}

func contextPatterns(lines []document.Line) []string {
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

// Excludes reports whether the ignore file keeps a path of the tree out, and
// by which line.
func (c Context) Excludes(file string) (at place.Span, out bool) {
	if c.matcher == nil {
		return at, false
	}
	p := strings.TrimPrefix(strings.TrimPrefix(file, c.root), "/")
	if out, err := c.matcher.MatchesOrParentMatches(p); err != nil || !out {
		return at, false
	}
	for i := len(c.lines) - 1; i >= 0; i-- {
		m, err := patternmatcher.New(contextPatterns(c.lines[i : i+1]))
		if err != nil {
			continue
		}
		if ok, err := m.MatchesOrParentMatches(p); err == nil && ok {
			return c.lines[i].At, true
		}
	}
	return c.lines[0].At, true
}
