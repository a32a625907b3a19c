package render_test

import (
	"bytes"
	"errors"
	"strings"
	"testing"

	"ubique/cli/render"
	"ubique/core/check"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/rules/catalog"
	"ubique/core/value"
)

func TestClean(t *testing.T) {
	for text, want := range map[string]string{
		"plain größe ★":  "plain größe ★",
		"a\x1b[31mb":     "a␛[31mb",
		"bell\x07":       "bell␇",
		"\u202eright":    "\\u{202e}right",
		"zero\u200bhere": "zero\\u{200b}here",
		"bad\xffbyte":    "bad\\xffbyte",
		"del\x7f":        "del\\u{7f}",
		"c1\u0085":       "c1\\u{85}",
		"two\nlines\t":   "two\nlines\t",
	} {
		if got := render.Clean(text); got != want {
			t.Errorf("%q is shown as %q, not %q", text, got, want)
		}
	}
}

// report is a report with one finding on a line.
func report(line string, at place.Span, f rules.Finding) *check.Report {
	f.Where = at
	return &check.Report{Route: "git", Findings: []rules.Finding{f}, Lines: map[place.Span]string{at: line}}
}

func text(t *testing.T, r *check.Report) string {
	t.Helper()
	var b bytes.Buffer
	if err := render.Check(&b, render.View{Width: 80}, r); err != nil {
		t.Fatal(err)
	}
	return b.String()
}

func TestTheSpanIsMarked(t *testing.T) {
	for _, c := range []struct {
		name, line        string
		col, end          int
		source, underline string
	}{
		{"in the middle", "  app.listen(3000);", 14, 18, "│ app.listen(3000);", "│            ▔▔▔▔"},
		{"after wide letters", "größe(3000)", 7, 11, "│ größe(3000)", "│       ▔▔▔▔"},
		{"after a tab", "\tlisten(3000)", 9, 13, "│ listen(3000)", "│        ▔▔▔▔"},
		{"past the end of the line", "listen(", 7, 99, "│ listen(", "│       ▔"},
		{"far to the right", strings.Repeat("x", 200) + "PORT" + strings.Repeat("y", 200), 201, 205, "│ …xxxxxxxxxxxxxxxxxxxxPORTyyyy", "│                      ▔▔▔▔"},
	} {
		t.Run(c.name, func(t *testing.T) {
			at := place.Span{File: "a.js", Line: 7, Col: c.col, EndLine: 7, EndCol: c.end}
			out := text(t, report(c.line, at, rules.Finding{Rule: "port/literal", Level: rules.Blocker, Message: "m", Remedy: "r"}))
			if !strings.Contains(out, "    7 "+c.source) || !strings.Contains(out, c.underline+"\n") {
				t.Errorf("it is shown as\n%s", out)
			}
			for l := range strings.Lines(out) {
				if n := len([]rune(strings.TrimRight(l, "\n"))); n > 80 {
					t.Errorf("a line has %d characters: %s", n, l)
				}
			}
		})
	}
}

func TestSecretsAreNotShown(t *testing.T) {
	at := place.Span{File: "a.js", Line: 1, Col: 10, EndLine: 1, EndCol: 26}
	out := text(t, report(`secret = "orion-at-nine"; other()`, at, rules.Finding{Rule: "secret/in-source", Level: rules.Risk, Message: "m", Remedy: "r"}))
	if strings.Contains(out, "orion") || strings.Contains(out, "other()") || !strings.Contains(out, "secret = (not shown)") {
		t.Errorf("the line of a secret is shown:\n%s", out)
	}
}

func TestPartsOfAFinding(t *testing.T) {
	at := place.Span{File: "src/a.js", Line: 3, Col: 1, EndLine: 3, EndCol: 4}
	out := text(t, report("abc", at, rules.Finding{
		Rule: "port/literal", Level: rules.Blocker, Likely: true, Component: "svc", Message: "says what is wrong", Remedy: "what to write",
		Hosts: []rules.HostLevel{{Host: "pushed", Level: rules.Blocker}, {Host: "image", Level: rules.Risk}},
		Trail: []value.Step{{At: place.Span{File: "b.js", Line: 9, Col: 2}, Note: "leads here"}},
	}))
	for _, want := range []string{"blocker port/literal", "src/a.js:3:1", "likely: says what is wrong", "↳ b.js:9:2  leads here", "on       pushed, image (risk)", "instead  what to write", "1 finding: 1 blocker, 0 risks, 0 advice.", "Do this first: port/literal, at src/a.js:3:1: what to write"} {
		if !strings.Contains(out, want) {
			t.Errorf("it does not say %q:\n%s", want, out)
		}
	}
}

func TestLongListsOfWhatIsUnknownAreCut(t *testing.T) {
	r := &check.Report{Route: "git"}
	for range 40 {
		r.Unknown = append(r.Unknown, check.Unknown{Component: ".", Question: "where it listens", Reason: "nobody knows", At: place.Whole("a.js")})
	}
	out := text(t, r)
	if n := strings.Count(out, "nobody knows"); n != 12 || !strings.Contains(out, "and 28 more") {
		t.Errorf("%d of 40 are shown:\n%s", n, out)
	}
}

func TestTheWorstComesFirstInTheSummary(t *testing.T) {
	a, b := place.Span{File: "a", Line: 1, Col: 1}, place.Span{File: "b", Line: 2, Col: 1}
	r := &check.Report{Route: "git", Lines: map[place.Span]string{}, Findings: []rules.Finding{
		{Rule: "pin/missing", Level: rules.Risk, Where: a, Message: "m", Remedy: "pin it"},
		{Rule: "port/literal", Level: rules.Blocker, Where: b, Message: "m", Remedy: "read PORT"},
	}}
	if out := text(t, r); !strings.HasSuffix(out, "Do this first: port/literal, at b:2:1: read PORT\n") {
		t.Errorf("the summary ends otherwise:\n%s", out)
	}
	if r.Worst() != rules.Blocker {
		t.Errorf("the worst level is %s", r.Worst())
	}
}

// broken is an output that cannot be written to.
type broken struct{}

func (broken) Write([]byte) (int, error) { return 0, errors.New("the disk is full") }

func TestErrorsOfTheOutputAreNotLost(t *testing.T) {
	r := report("x", place.Span{File: "a", Line: 1, Col: 1}, rules.Finding{Rule: "port/literal", Level: rules.Blocker, Message: strings.Repeat("long ", 3000), Remedy: "r"})
	for name, err := range map[string]error{
		"check":  render.Check(broken{}, render.View{Width: 80}, r),
		"survey": render.Survey(broken{}, render.View{Width: 80}, r),
		"matrix": render.Matrix(broken{}, render.View{Width: 80}, r),
		"json":   render.JSON(broken{}, "0", r),
		"sarif":  render.SARIF(broken{}, "0", r),
		"rules":  render.Rules(broken{}, render.View{Width: 80}, catalog.All()),
	} {
		if err == nil {
			t.Errorf("%s says nothing of an output that cannot be written to", name)
		}
	}
}

func TestColourIsOnlyColour(t *testing.T) {
	at := place.Span{File: "a.js", Line: 3, Col: 5, EndLine: 3, EndCol: 9}
	r := report("let port = 3000;", at, rules.Finding{Rule: "port/literal", Level: rules.Blocker, Message: "m", Remedy: "r", Hosts: []rules.HostLevel{{Host: "pushed", Level: rules.Blocker}}})
	var plain, colour bytes.Buffer
	if err := render.Check(&plain, render.View{Width: 80}, r); err != nil {
		t.Fatal(err)
	}
	if err := render.Check(&colour, render.View{Width: 80, Color: true}, r); err != nil {
		t.Fatal(err)
	}
	stripped := colour.String()
	for strings.Contains(stripped, "\x1b[") {
		before, rest, _ := strings.Cut(stripped, "\x1b[")
		_, after, _ := strings.Cut(rest, "m")
		stripped = before + after
	}
	if stripped != plain.String() {
		t.Errorf("without its colours the text is another:\n%q\n%q", stripped, plain.String())
	}
}
