package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/trace"
	"ubique/core/value"
)

// The calls by which a program of Django runs a command of it (documentation of
// Django 5.2, "django-admin and manage.py", "Running management commands from your
// code").
const (
	commandLine = "django.core.management.execute_from_command_line"
	callCommand = "django.core.management.call_command"
)

func djangoCommand(v *value.Value) bool { return v.Text == commandLine || v.Text == callCommand }

// runserver gives the listener of `manage.py runserver ADDRPORT`. Where manage.py
// changes the arguments before it hands them on, it is the call that tells.
func runserver(st *fact.Start) *fact.Listener {
	final := st.Final
	l := &fact.Listener{Process: st.Process, Server: "runserver", Via: "default", At: final.At, PortAt: final.At, HostAt: final.At, Dev: true}
	seen := false
	for _, a := range final.Args {
		switch {
		case a.Text == "runserver":
			seen = true
			l.At = a.At
		case seen && !strings.HasPrefix(a.Text, "-"):
			l.Bind, l.PortAt, l.HostAt, l.Via, l.Bare, l.Free = a.Value, a.At, a.At, "flag", a.Bare, true
		}
	}
	f := st.Program.Loader.File(st.Program.Main)
	if f == nil || f.Body == nil {
		return l
	}
	changed := false
	argv := func(n *code.Node) bool {
		for n.Is(code.Index) {
			n = n.Kid(0)
		}
		return n.Is(code.Member) && n.Dotted() == "sys.argv"
	}
	f.Body.Walk(func(n *code.Node) bool {
		switch {
		case n.Is(code.Assign) && argv(n.Kid(0)):
			changed = true
		case n.Is(code.Call) && n.Kid(0).Is(code.Member) && argv(n.Kids[0].Kid(0)):
			changed = true
		case n.Is(code.Assign) && n.Kid(0).Is(code.Member) && l.Bind == nil && (n.Kids[0].Name == "default_port" || n.Kids[0].Name == "default_addr"):
			v := st.Program.Expr(n.Kid(1), f.Top)
			if n.Kids[0].Name == "default_port" {
				l.Port, l.PortAt = v, f.At(n)
			} else {
				l.Host, l.HostAt = v, f.At(n)
			}
		}
		return true
	})
	for _, site := range f.Calls {
		if a := site.Node.Kid(1); st.Program.Callee(site).Text == commandLine && (changed || a != nil && !a.Is(code.Member) && !a.Is(code.Name)) {
			why := value.NotKnown("the arguments that manage.py makes", f.At(site.Node))
			return &fact.Listener{Process: st.Process, Server: "runserver", Via: "code", At: f.At(site.Node), PortAt: f.At(site.Node), HostAt: f.At(site.Node), Port: why, Host: why, Dev: true, Met: true}
		}
	}
	return l
}

// djangoServes is the listener of a command that a program hands to Django; nil
// for any but runserver.
func djangoServes(c trace.Call) *fact.Listener {
	words := c.Args
	if c.Callee.Text == commandLine {
		if len(words) == 0 || words[0].Kind != value.List || len(words[0].Kids) < 2 {
			return nil
		}
		words = words[0].Kids[1:]
	}
	if len(words) == 0 || words[0].Kind != value.Str || words[0].Text != "runserver" {
		return nil
	}
	l := &fact.Listener{Server: "runserver", Via: "code", At: c.At, PortAt: c.At, HostAt: c.At, Bind: c.Keys["addrport"], Dev: true}
	for _, w := range words[1:] {
		if w.Kind != value.Str || !strings.HasPrefix(w.Text, "-") {
			l.Bind = w
		}
	}
	return l
}
