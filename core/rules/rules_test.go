package rules_test

import (
	"strings"
	"testing"

	"ubique/core/fact"
	"ubique/core/host"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/rules/catalog"
	"ubique/core/value"
)

func TestEveryRuleIsComplete(t *testing.T) {
	seen := map[string]bool{}
	family := -1
	for _, r := range catalog.All() {
		if seen[r.ID] {
			t.Errorf("%s is there twice", r.ID)
		}
		seen[r.ID] = true
		if r.Check == nil && r.Tree == nil || r.Check != nil && r.Tree != nil {
			t.Errorf("%s looks at components or at the tree, one of the two", r.ID)
		}
		if r.Title == "" || strings.HasSuffix(r.Title, ".") || r.Level < rules.Advice || r.Level > rules.Blocker {
			t.Errorf("%s has the title %q and the level %s", r.ID, r.Title, r.Level)
		}
		for _, part := range []string{"**Why hosts care.**", "Bad:", "Good:", "**When to ignore it.**", "```"} {
			if !strings.Contains(r.Doc, part) {
				t.Errorf("the explanation of %s has no %q", r.ID, part)
			}
		}
		at := -1
		for i, f := range rules.Families {
			if f == r.Family() {
				at = i
			}
		}
		if at < family {
			t.Errorf("%s stands before its turn", r.ID)
		}
		family = at
	}
	for _, id := range strings.Fields("runtime/undetected runtime/misnamed pin/missing pin/disagree pin/floating-image manifest/missing manifest/undeclared manifest/dev-only manifest/unpinned start/missing start/dev-server start/reload start/target-missing start/callable-missing start/program-undeclared start/web-missing port/literal port/name-case port/other-name port/loopback port/no-fallback start/disagree port/mismatch port/unexpanded ship/untracked ship/ignored ship/dependencies secret/file-shipped secret/in-source settings/debug settings/hosts-open settings/hosts-empty descriptor/unreadable") {
		if !seen[id] {
			t.Errorf("there is no %s", id)
		}
	}
}

func TestFind(t *testing.T) {
	if l := catalog.Find("PORT/Literal"); len(l) != 1 || l[0].ID != "port/literal" {
		t.Errorf("a rule by its name in other letters: %v", l)
	}
	if l := catalog.Find("port"); len(l) < 5 {
		t.Errorf("a family: %v", l)
	}
	if l := catalog.Find("sky"); len(l) != 0 {
		t.Errorf("what there is not: %v", l)
	}
}

func TestLevels(t *testing.T) {
	for _, l := range []rules.Level{rules.Advice, rules.Risk, rules.Blocker} {
		if got, ok := rules.ParseLevel(l.String()); !ok || got != l {
			t.Errorf("%s is read as %s", l, got)
		}
	}
	if _, ok := rules.ParseLevel("never"); ok {
		t.Error("never is a level")
	}
}

func TestFindingsOfSeveralHostsAreOne(t *testing.T) {
	at := place.Span{File: "a", Line: 1, Col: 1}
	step := func(n int) value.Step { return rules.Step(place.Span{File: "b", Line: n}, "n") }
	rule := &rules.Rule{ID: "port/x", Level: rules.Risk, Check: func(p *rules.Pass) {
		for i, on := range p.On {
			level := rules.Level(0)
			if i == 1 {
				level = rules.Blocker
			}
			p.Report(on, level, rules.Finding{Where: at, Message: "m", Trail: []value.Step{step(1), step(2 + i)}})
		}
		p.Report(p.On[0], 0, rules.Finding{Where: at, Message: "another"})
	}}
	on := []*rules.On{{Host: &host.Contract{Name: "a"}}, {Host: &host.Contract{Name: "b"}}}
	found := rules.Run([]*rules.Rule{rule}, nil, &fact.Component{ID: "c"}, on, "2026-11-26")
	if len(found) != 2 {
		t.Fatalf("there are %d findings: %v", len(found), found)
	}
	f := found[0]
	if f.Level != rules.Blocker || len(f.Hosts) != 2 || f.Hosts[0].Level != rules.Risk || f.Hosts[1].Level != rules.Blocker || f.Component != "c" || f.Rule != "port/x" {
		t.Errorf("the one finding is %+v", f)
	}
	if len(f.Trail) != 3 {
		t.Errorf("its trail does not hold what each host adds: %v", f.Trail)
	}
}

func TestOrderOfFindings(t *testing.T) {
	at := func(file string, line int) place.Span { return place.Span{File: file, Line: line, Col: 1} }
	list := []rules.Finding{
		{Rule: "settings/debug", Component: "a", Where: at("a", 1)},
		{Rule: "port/literal", Component: "a", Where: at("a", 10)},
		{Rule: "port/literal", Component: "a", Where: at("a", 2)},
		{Rule: "pin/missing", Component: "b", Where: at("b", 1)},
		{Rule: "pin/missing", Component: "a", Where: at("z", 1)},
		{Rule: "port/loopback", Component: "a", Where: at("a", 2)},
	}
	rules.Sort(list)
	var got []string
	for _, f := range list {
		got = append(got, f.Component+" "+f.Rule+" "+f.Where.String())
	}
	want := "a pin/missing z:1:1|a port/literal a:2:1|a port/loopback a:2:1|a port/literal a:10:1|a settings/debug a:1:1|b pin/missing b:1:1"
	if s := strings.Join(got, "|"); s != want {
		t.Errorf("the order is\n%s\nnot\n%s", s, want)
	}
	rules.Mark(list, func(place.Span) string { return "the same line" })
	marks := map[string]bool{}
	for _, f := range list {
		marks[f.Fingerprint] = true
	}
	if len(marks) != len(list) {
		t.Errorf("%d findings have %d fingerprints", len(list), len(marks))
	}
}

func TestOwnerOfAFile(t *testing.T) {
	p := rules.TreePass{Components: []*fact.Component{{ID: ".", Dir: ""}, {ID: "a", Dir: "a"}, {ID: "a/b", Dir: "a/b"}}}
	for file, want := range map[string]string{"x": ".", "a/x": "a", "a/b/c/x": "a/b", "ab/x": "."} {
		if c := p.Owner(file); c.ID != want {
			t.Errorf("%s belongs to %s, not %s", file, c.ID, want)
		}
	}
}
