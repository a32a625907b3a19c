package fact_test

import (
	"testing"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

func TestInterface(t *testing.T) {
	for host, want := range map[string]string{
		"0.0.0.0": "any", "::": "any", "[::]": "any", "*": "any", "0": "any", "localhost": "loopback", "LOCALHOST": "loopback", "127.0.0.1": "loopback", "127.1.2.3": "loopback", "::1": "loopback", "[::1]": "loopback",
		"10.0.0.5": "10.0.0.5", "dome.hill.example": "dome.hill.example", "0:0:0:0:0:0:0:0": "any",
	} {
		if got := fact.Interface(host); got != want {
			t.Errorf("%s is %s, not %s", host, got, want)
		}
	}
}

func port(v *value.Value) *fact.Listener { return &fact.Listener{Server: "node", Port: v} }

func TestDecides(t *testing.T) {
	a, b := value.Variable("PORT", value.ReadsUndef, place.Span{}), value.Variable("OTHER", value.ReadsUndef, place.Span{})
	l := port(value.Or(a, value.Or(b, value.Number(3000, place.Span{}), place.Span{}), place.Span{}))
	var names []string
	for _, v := range l.Decides(value.Environ{}) {
		names = append(names, v.Text)
	}
	if len(names) != 2 || names[0] != "PORT" || names[1] != "OTHER" {
		t.Errorf("%v decide the port", names)
	}
	names = nil
	for _, v := range l.Decides(value.Environ{Set: map[string]string{"PORT": "1"}}) {
		names = append(names, v.Text)
	}
	if len(names) != 1 || names[0] != "PORT" {
		t.Errorf("with PORT set %v decide it", names)
	}
}

func TestGuards(t *testing.T) {
	l := port(value.Number(3000, place.Span{}))
	l.Guards = []*value.Value{value.Variable("SERVE", value.ReadsUndef, place.Span{})}
	if o := l.Under(value.Environ{}); o.Outcome != "skipped" {
		t.Errorf("under a condition that does not hold it %s", o.Outcome)
	}
	if o := l.Under(value.Environ{Set: map[string]string{"SERVE": "1"}}); o.Outcome != "listens" || o.Port != 3000 {
		t.Errorf("under one that holds it %+v", o)
	}
	l.Guards = []*value.Value{value.NotKnown("who knows", place.Span{})}
	if o := l.Under(value.Environ{}); o.Outcome != "listens" {
		t.Errorf("under one that is not known it %s", o.Outcome)
	}
	l = port(value.NotKnown("the port of the day", place.Span{}))
	if o := l.Under(value.Environ{}); o.Outcome != "unknown" || o.Reason != "the port of the day" {
		t.Errorf("a port that is not known: %+v", o)
	}
}

func TestDependenciesByName(t *testing.T) {
	c := fact.Component{Dependencies: []fact.Dependency{{Name: "a", Dev: true}, {Name: "b", Dev: true}, {Name: "a"}}}
	if d, ok := c.Dep("a"); !ok || d.Dev {
		t.Error("of two declarations the one that runs counts")
	}
	if d, ok := c.Dep("b"); !ok || !d.Dev {
		t.Error("a development dependency is not found")
	}
	if _, ok := c.Dep("c"); ok {
		t.Error("what is not declared is found")
	}
	if (&fact.Component{}).Path("x") != "x" || (&fact.Component{Dir: "a/b"}).Path("x") != "a/b/x" {
		t.Error("paths of a component are wrong")
	}
}
