package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// rustSockets are the calls of Rust that listen on an address, by the end of
// their path. Sources: Rust standard library, Tokio 1, async-std 1, hyper 0.14
// and 1, axum-server 0.7, tiny_http 0.12, rouille 3, poem 3, salvo 0.8, tide
// 0.16, tonic 0.14; read 2026-11.
var rustSockets = map[string]bool{
	"TcpListener.bind": true, "TcpListener.new": true, "Server.bind": true, "Server.try_bind": true, "axum_server.bind": true, "axum_server.bind_rustls": true,
	"Server.http": true, "UnixListener.bind": true, "rouille.start_server": true, "start_server": true,
}

// rustMethods are methods that listen, by what their chain begins with.
var rustMethods = []struct{ chain, method string }{
	{"HttpServer.new", "bind"}, {"HttpServer.new", "bind_rustls"}, {"HttpServer.new", "bind_rustls_0_23"}, {"HttpServer.new", "bind_openssl"}, {"HttpServer.new", "bind_auto_h2c"},
	{"warp.serve", "run"}, {"warp.serve", "bind"}, {"warp.serve", "try_bind"}, {"warp.serve", "bind_ephemeral"}, {"tide.new", "listen"}, {"tide.with_state", "listen"}, {"Server.builder", "serve"},
}

// rustListener finds a call that listens in Rust.
func rustListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	path := callee.Dotted()
	two := value.Tail(path, 2)
	ok := rustSockets[two]
	if !ok && callee.Is(code.Member) {
		head := chainHead(e, callee.Kid(0), site.Scope, 0)
		for _, m := range rustMethods {
			ok = ok || callee.Name == m.method && (head == m.chain || strings.HasSuffix(head, "."+m.chain))
		}
	}
	args, _ := e.Arguments(site)
	if !ok || len(args) == 0 || dead(site.Scope, f, live) {
		return nil
	}
	l := rustFilled(two, args, f.At(site.Node))
	l.Shared = site.InTry
	return guardedBy(l, e, site)
}

// rustNoted is the name of a call that listens, by what is called; empty for any other.
func rustNoted(v *value.Value) string {
	two, last := value.Tail(v.Text, 2), value.Tail(v.Text, 1)
	if rustSockets[two] {
		return two
	}
	for _, m := range rustMethods {
		if last == m.method && strings.Contains(v.Text, m.chain+"()") {
			return last
		}
	}
	return ""
}

// rustFilled is the listener that a call makes of what it is given: an address as one
// text, or a host and a port.
func rustFilled(name string, args []*value.Value, at place.Span) *fact.Listener {
	l := &fact.Listener{Server: "rust", Via: "code", At: at}
	a := args[0]
	if a.Kind == value.List && len(a.Kids) > 0 && (len(a.Kids) != 2 || a.Kids[1].Kind == value.Str || a.Kids[1].Kind == value.List) { // several: the first that can be
		a = a.Kids[0]
	}
	switch {
	case name == "UnixListener.bind":
		l.Bind = socketFile(a, at)
	case a.Kind == value.List && len(a.Kids) == 2:
		l.Host, l.Port = a.Kids[0], a.Kids[1]
		if l.Host.Kind == value.List {
			l.Host = value.RustIP(l.Host)
		}
	default:
		l.Bind = a
	}
	l.PortAt, l.HostAt = placeOf(l.Port, placeOf(l.Bind, at)), placeOf(l.Host, placeOf(l.Bind, at))
	return l
}

// chainHead is the path that a chain of calls begins with: HttpServer.new of
// HttpServer::new(…).workers(2). Variables are followed.
func chainHead(e *value.Eval, n *code.Node, s *code.Scope, depth int) string {
	for depth < 8 {
		switch {
		case n.Is(code.Call):
			if p := n.Kid(0).Dotted(); p != "" {
				first, _, deep := strings.Cut(p, ".")
				if bs := bound(first, s); bs == nil || !deep {
					return p
				}
			}
			n = n.Kid(0)
		case n.Is(code.Member):
			n = n.Kid(0)
		case n.Is(code.Name):
			b := bound(n.Name, s)
			if b == nil || b.Value == nil {
				return ""
			}
			n, depth = b.Value, depth+1
		case n.Is(code.Await):
			n = n.Kid(0)
		default:
			return ""
		}
	}
	return ""
}

// bound finds the variable of a name; nil where it is none.
func bound(name string, s *code.Scope) *code.Binding {
	for x := s; x != nil; x = x.Parent {
		if bs := x.Names[name]; len(bs) > 0 {
			if b := bs[len(bs)-1]; b.Kind != "import" && b.Kind != "class" && b.Kind != "func" {
				return b
			}
			return nil
		}
	}
	return nil
}

// rocket finds the server of Rocket (guide 0.5, "Configuration"): Rocket.toml,
// by the profile, under ROCKET_ADDRESS and ROCKET_PORT; a configuration in
// code beats both.
func rocket(e *value.Eval, p *Program, st *fact.Start, files []*code.File) *fact.Listener {
	for _, f := range files {
		if f.Lang != code.Rust || f.Skimmed {
			continue
		}
		for _, site := range f.Calls {
			path := site.Node.Kid(0).Dotted()
			if path != "rocket.build" && path != "rocket.custom" && path != "Rocket.build" && path != "Rocket.custom" {
				continue
			}
			at := f.At(site.Node)
			l := &fact.Listener{Server: "rocket", Via: "code", At: at, PortAt: at, HostAt: at}
			profile := "release"
			if cmd := st.Command; !strings.Contains(cmd, "release") && strings.Contains(cmd, "cargo run") {
				profile = "debug"
			}
			file := Join(st.Final.Dir, "Rocket.toml")
			if d := p.Data(file); d != nil {
				for _, section := range []string{"default", profile, "global"} {
					if n := d.Get(section).Get("port"); n != nil {
						l.Port, l.PortAt, l.Via = value.FromDocument(n), n.At(), "setting"
					}
					if n := d.Get(section).Get("address"); n != nil {
						l.Host, l.HostAt, l.Via = value.FromDocument(n), n.At(), "setting"
					}
				}
			}
			if !strings.HasSuffix(path, "custom") {
				return l
			}
			port, host := l.Port, l.Host
			l.Port, l.Host, l.Server = nil, nil, "rocket custom"
			set, figment := (*value.Value)(nil), false
			if n := site.Node.Kid(1); n != nil {
				set = e.Expr(n, site.Scope)
				figment = rocketConfig(e, l, set, n, site.Scope, f)
			}
			switch why := "a configuration that is made while the program runs"; {
			case set == nil, set.Kind != value.Object && !figment:
				l.Port, l.Host = value.NotKnown(why, at), value.NotKnown(why, at)
			case figment: // what it does not set comes from the variables and the file
				if l.Port == nil {
					l.Port = value.EnvOr("ROCKET_PORT", port, at)
				}
				if l.Host == nil {
					l.Host = value.EnvOr("ROCKET_ADDRESS", host, at)
				}
			}
			return l
		}
	}
	return nil
}

// rocketConfig reads Config { port, address, .. } and figment().merge((…)); it
// reports whether a figment is behind it.
func rocketConfig(e *value.Eval, l *fact.Listener, v *value.Value, n *code.Node, s *code.Scope, f *code.File) bool {
	if v.Kind == value.Object {
		if p := v.Get("port"); p != nil && p.Kind != value.Unknown {
			l.Port, l.PortAt = p, placeOf(p, l.At)
		}
		if h := v.Get("address"); h != nil && h.Kind != value.Unknown {
			l.Host, l.HostAt = h, placeOf(h, l.At)
		}
		return false
	}
	for depth := 0; n != nil && depth < 12; depth++ {
		switch {
		case n.Is(code.Name):
			b := bound(n.Name, s)
			if b == nil {
				return false
			}
			n = b.Value
		case n.Is(code.Call) && n.Kid(0).Is(code.Member) && n.Kids[0].Name == "merge":
			if pair := e.Expr(n.Kid(1), s); pair.Kind == value.List && len(pair.Kids) == 2 && pair.Kids[0].Kind == value.Str {
				switch {
				case pair.Kids[0].Text == "port" && l.Port == nil:
					l.Port, l.PortAt = pair.Kids[1], f.At(n)
				case pair.Kids[0].Text == "address" && l.Host == nil:
					l.Host, l.HostAt = pair.Kids[1], f.At(n)
				}
			}
			n = n.Kids[0].Kid(0)
		case n.Is(code.Call):
			path := n.Kid(0).Dotted()
			return strings.HasSuffix(path, "Config.figment") || path == "rocket.Config.figment"
		default:
			return false
		}
	}
	return false
}
