package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/trace"
	"ubique/core/value"
)

// rubySocket says where a call of Ruby has what it listens on.
type rubySocket struct {
	server     string
	port, host string // names of the options
	pair       bool   // (port) or (host, port) by place
}

// rubySockets are the calls of Ruby that listen. Sources: Ruby 3.4 core and
// standard library, Rack 3, Rackup 2, Puma 7, WEBrick 1.9, Sinatra 4,
// EventMachine 1.3, em-websocket 0.5, Cool.io 1.8; read 2026-11.
var rubySockets = map[string]rubySocket{
	"TCPServer.new": {"tcpserver", "", "", true}, "TCPServer.open": {"tcpserver", "", "", true},
	"Socket.tcp_server_loop": {"tcpserver", "", "", true}, "Socket.tcp_server_sockets": {"tcpserver", "", "", true},
	"WEBrick.HTTPServer.new": {"webrick", "Port", "BindAddress", false}, "HTTPServer.new": {"webrick", "Port", "BindAddress", false}, "WEBrick.GenericServer.new": {"webrick", "Port", "BindAddress", false},
	"Rack.Handler.WEBrick.run": {"webrick run", "Port", "Host", false}, "Rackup.Handler.WEBrick.run": {"webrick run", "Port", "Host", false},
	"Rack.Handler.Puma.run": {"puma run", "Port", "Host", false}, "Rackup.Handler.Puma.run": {"puma run", "Port", "Host", false}, "Rack.Handler.Falcon.run": {"puma run", "Port", "Host", false},
	"Rack.Handler.Thin.run": {"thin", "Port", "Host", false}, "Rackup.Handler.Thin.run": {"thin", "Port", "Host", false},
	"Rack.Handler.default.run": {"puma run", "Port", "Host", false}, "Rackup.Handler.default.run": {"puma run", "Port", "Host", false},
	"EventMachine.start_server": {"tcpserver", "", "", true}, "EM.start_server": {"tcpserver", "", "", true}, "Cool.io.TCPServer.new": {"tcpserver", "", "", true}, "Coolio.TCPServer.new": {"tcpserver", "", "", true},
	"EventMachine.WebSocket.start": {"tcpserver", "port", "host", false}, "EventMachine.WebSocket.run": {"tcpserver", "port", "host", false}, "EM.WebSocket.start": {"tcpserver", "port", "host", false}, "EM.WebSocket.run": {"tcpserver", "port", "host", false},
	"Thin.Server.start": {"thin", "", "", true}, "Thin.Server.new": {"thin", "", "", true},
	"Rack.Server.start": {"rack server", "Port", "Host", false}, "Rackup.Server.start": {"rack server", "Port", "Host", false},
}

// rubyFiles are the calls of Ruby that listen on a socket that is a file (Ruby 3.4,
// "UNIXServer", "Socket").
var rubyFiles = map[string]bool{"UNIXServer.new": true, "UNIXServer.open": true, "Socket.unix_server_loop": true, "Socket.unix_server_socket": true,
	"EventMachine.start_unix_domain_server": true, "EM.start_unix_domain_server": true}

// socketBinds is the method with which a socket of its own is put to an address.
const socketBinds = "Socket.new.bind"

// rubyListener finds a call that listens in Ruby.
func rubyListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	if !callee.Is(code.Member) {
		return nil
	}
	switch callee.Name {
	case "new", "open", "run", "start", "run!", "bind", "add_tcp_listener", "add_unix_listener", "tcp_server_loop", "tcp_server_sockets", "unix_server_loop", "unix_server_socket", "start_server", "start_unix_domain_server":
	default:
		return nil
	}
	if dead(site.Scope, f, live) {
		return nil
	}
	at := f.At(site.Node)
	l := &fact.Listener{Via: "code", At: at, Shared: site.InTry || site.Scope.Func != nil && site.Scope.Func.Name == ""}
	args, keys := e.Arguments(site)
	for _, a := range args {
		if a.Kind == value.Object {
			for _, k := range a.Keys {
				if v := a.Get(k); keys[k] == nil && v != nil {
					keys[k] = v
				}
			}
		}
	}
	name := strings.TrimPrefix(callee.Kid(0).Dotted(), "self.") + "." + callee.Name
	if base := e.Expr(callee.Kid(0), site.Scope); base.Kind == value.External {
		name = base.Text + "." + callee.Name
	}
	if !rubyFilled(l, name, args, keys) {
		return nil
	}
	return guardedBy(l, e, site)
}

// rubyFilled says where a call listens, by its path and what it is given; false
// where it does not.
func rubyFilled(l *fact.Listener, name string, args []*value.Value, keys map[string]*value.Value) bool {
	at := l.At
	name = strings.ReplaceAll(name, "()", "")
	s, ok := rubySockets[name]
	switch {
	case (rubyFiles[name] || strings.HasSuffix(name, ".add_unix_listener")) && len(args) > 0:
		l.Server, l.Bind = "tcpserver", socketFile(args[0], at)
		l.PortAt, l.HostAt = placeOf(args[0], at), placeOf(args[0], at)
		return true
	case ok && s.pair:
		l.Server = s.server
		if len(args) == 1 {
			l.Port = args[0]
		} else if len(args) > 1 {
			l.Host, l.Port = args[0], args[1]
		}
	case ok:
		l.Server = s.server
		l.Port, l.Host = keys[s.port], keys[s.host]
		if v := keys["server"]; v != nil && s.server == "rack server" && strings.EqualFold(v.Text, "webrick") {
			l.Server = "webrick run"
		}
		if v := keys["**"]; v != nil && l.Port == nil {
			l.Port = value.NotKnown("arguments that are spread", v.At)
		}
	case strings.HasSuffix(name, ".add_tcp_listener") && len(args) > 1:
		l.Server, l.Host, l.Port = "tcpserver", args[0], args[1]
	case name == socketBinds && len(args) == 1: // Ruby 3.4, Socket#bind
		a := args[0]
		if file := strings.TrimSuffix(a.Text, "()"); a.Kind == value.External && len(a.Kids) == 1 && (file == "Addrinfo.unix" || file == "Socket.sockaddr_un" || file == "Socket.pack_sockaddr_un") {
			l.Server, l.Bind = "tcpserver", socketFile(a.Kids[0], at)
			l.PortAt, l.HostAt = placeOf(a.Kids[0], at), placeOf(a.Kids[0], at)
			return true
		}
		if a.Kind != value.External || len(a.Kids) < 2 {
			return false
		}
		switch strings.TrimSuffix(a.Text, "()") {
		case "Addrinfo.tcp":
			l.Host, l.Port = a.Kids[0], a.Kids[1]
		case "Socket.sockaddr_in", "Socket.pack_sockaddr_in":
			l.Port, l.Host = a.Kids[0], a.Kids[1]
		default:
			return false
		}
		l.Server = "tcpserver"
	case name == trace.SinatraRuns:
		l.Server, l.Port, l.Host, l.Mode = "sinatra", keys["port"], keys["bind"], keys["environment"]
	default: // Sinatra is looked at as a whole
		return false
	}
	l.PortAt, l.HostAt = placeOf(l.Port, at), placeOf(l.Host, at)
	return true
}

// rubyNoted says which calls of a program of Ruby are looked at while it is gone
// through, and whether it stays in them.
func rubyNoted(v *value.Value) (note, stays bool) {
	name := strings.ReplaceAll(v.Text, "()", "")
	s, ok := rubySockets[name]
	note = ok || rubyFiles[name] || strings.HasSuffix(name, ".add_unix_listener") || name == trace.SinatraRuns || name == socketBinds || strings.HasSuffix(name, ".add_tcp_listener")
	switch {
	case ok && (strings.HasSuffix(name, ".run") || name == "Thin.Server.start" || strings.HasPrefix(name, "Rack")), strings.HasSuffix(name, "HTTPServer.new.start"), strings.HasSuffix(name, "_loop"), ok && s.server == "rack server":
		stays = true
	}
	return note, stays
}

// sinatra finds the server that an application of Sinatra starts by itself:
// classic ones where the file is run, others through run! (Sinatra: README,
// "Configuration", and "Modular vs. Classic Style"; its source of
// Application.run?, 2026-11).
func sinatra(e *value.Eval, files []*code.File, process string) *fact.Listener {
	var at *place.Span
	l := &fact.Listener{Process: process, Server: "sinatra", Via: "code"}
	classic, started, stopped := false, false, false
	within := map[*code.Node]*value.Value{} // the condition of a block of configure
	set := func(name string, v *value.Value, f *code.File, n *code.Node) {
		switch name {
		case "port":
			l.Port, l.PortAt = v, f.At(n)
		case "bind":
			l.Host, l.HostAt = v, f.At(n)
		case "run":
			if v.Kind == value.Bool && v.Num == 0 {
				stopped = true
			}
		case "environment":
			l.Mode = v
		}
	}
	for _, f := range files {
		if f.Lang != code.Ruby || f.Skimmed {
			continue
		}
		for _, imp := range f.Calls {
			callee := imp.Node.Kid(0)
			if callee.Is(code.Name) && callee.Name == "require" && imp.Node.Kid(1).Is(code.String) && imp.Node.Kids[1].Name == "sinatra" {
				classic = true
				s := f.At(imp.Node)
				at = &s
			}
			if !callee.Is(code.Name) && !callee.Is(code.Member) {
				continue
			}
			switch callee.Name {
			case "configure":
				if n := len(imp.Node.Kids); n > 2 && imp.Node.Kids[n-1].Is(code.Func) {
					within[imp.Node.Kids[n-1]] = runFor(l, imp.Node.Kids[1:n-1], f.At(imp.Node))
				}
			case "set":
				name := ""
				if k := imp.Node.Kid(1); k.Is(code.String) && imp.Node.Kid(2) != nil {
					name = k.Name
					if imp.Node.Kids[2].Is(code.Func) {
						continue
					}
					v := e.Expr(imp.Node.Kids[2], imp.Scope)
					guards := []*value.Value{}
					for _, g := range imp.Guards {
						guards = append(guards, e.Guard(g))
					}
					if w := within[imp.Scope.Func]; w != nil {
						guards = append(guards, w)
					}
					for i := len(guards) - 1; i >= 0; i-- {
						old := map[string]*value.Value{"port": l.Port, "bind": l.Host}[name]
						switch {
						case old == nil && name == "port": // its own
							old = value.Or(value.Variable("PORT", value.ReadsUndef, v.At), value.Number(float64(fact.Servers[l.Server].Port), v.At), v.At)
						case old == nil:
							old = &value.Value{Kind: value.Undef}
						}
						v = &value.Value{Kind: value.Cond, Py: true, At: v.At, Kids: []*value.Value{guards[i], v, old}}
					}
					set(name, v, f, imp.Node.Kids[2])
				}
				for _, k := range imp.Node.Args() {
					if k.Is(code.Keyword) {
						set(k.Name, e.Expr(k.Kid(0), imp.Scope), f, k.Kid(0))
					}
				}
			case "disable":
				if imp.Node.Kid(1).Is(code.String) && imp.Node.Kids[1].Name == "run" {
					stopped = true
				}
			case "run!":
				skip := false
				for _, g := range imp.Guards {
					if yes, ok := e.Guard(g).Under(value.Environ{}).Truth(true); ok && !yes {
						skip = true
					}
				}
				if skip {
					continue
				}
				started = true
				s := f.At(imp.Node)
				at = &s
				for _, k := range imp.Node.Args() {
					if k.Is(code.Keyword) { // host is no setting of its own
						set(k.Name, e.Expr(k.Kid(0), imp.Scope), f, k.Kid(0))
					}
				}
			}
		}
		// class App < Sinatra::Base … run! if app_file == $0
		called := map[*code.Node]bool{}
		for _, c := range f.Calls {
			called[c.Node.Kid(0)] = true
		}
		for _, n := range f.Body.Kids {
			n.Walk(func(k *code.Node) bool {
				if called[k] {
					return true
				}
				if k.Is(code.Name) && k.Name == "run!" || k.Is(code.Member) && k.Name == "run!" {
					started = true
					if at == nil || !classic {
						s := f.At(k)
						at = &s
					}
				}
				return true
			})
		}
	}
	if at == nil || !started && (!classic || stopped) {
		return nil
	}
	l.At = *at
	// Flags of the command line are read by the classic style where it is loaded;
	// what is set after that stays (Sinatra 3, lib/sinatra/main.rb).
	if classic {
		for i, a := range e.Args {
			if a.Kind == value.Str && i+1 < len(e.Args) {
				switch a.Text {
				case "-p":
					if l.Port != nil && l.Port.Kind != value.Cond {
						break
					}
					l.Port, l.PortAt, l.Via = e.Args[i+1], e.Args[i+1].At, "flag"
				case "-o":
					if l.Host != nil && l.Host.Kind != value.Cond {
						break
					}
					l.Host, l.HostAt = e.Args[i+1], e.Args[i+1].At
				case "-e":
					l.Mode = e.Args[i+1]
				}
			}
		}
	}
	if l.Port == nil {
		l.PortAt = l.At
	}
	if l.Host == nil {
		l.HostAt = l.At
	}
	return l
}

// runFor is the condition that a program of Sinatra is run for one of some
// environments.
func runFor(l *fact.Listener, names []*code.Node, at place.Span) *value.Value {
	mode := l.Mode
	if mode == nil {
		rack := value.Or(value.Variable("RACK_ENV", value.ReadsUndef, at), value.Text("development", at), at)
		mode = value.Or(value.Variable("APP_ENV", value.ReadsUndef, at), rack, at)
	}
	var test *value.Value
	for _, n := range names {
		if !n.Is(code.String) {
			return value.NotKnown("which environments are configured", at)
		}
		is := &value.Value{Kind: value.Op, Text: "===", At: at, Kids: []*value.Value{mode, value.Text(n.Name, at)}}
		if test == nil {
			test = is
		} else {
			test = value.Or(test, is, at)
		}
	}
	return test
}

// usesSinatra reports whether files load Sinatra.
func usesSinatra(files []*code.File) bool {
	for _, f := range files {
		if f.Lang == code.Ruby && strings.Contains(string(f.Src), "sinatra") {
			return true
		}
	}
	return false
}

// httpdOfRuby reads `ruby -run -e httpd -- -p PORT DIR` (Ruby's un library).
func httpdOfRuby(st *fact.Start) *fact.Listener {
	f := st.Final
	un, httpd := false, false
	for _, a := range f.Args {
		un = un || a.Text == "-run"
		httpd = httpd || a.Text == "httpd" || a.Text == "-ehttpd"
	}
	if f.Program != "ruby" || !un || !httpd {
		return nil
	}
	l := &fact.Listener{Process: st.Process, Server: "ruby httpd", Via: "default", At: f.At, PortAt: f.At, HostAt: f.At}
	for i, a := range f.Args {
		for _, flag := range []string{"-p", "--port"} {
			switch {
			case a.Text == flag && i+1 < len(f.Args):
				l.Port, l.PortAt, l.Via, l.Bare = f.Args[i+1].Value, f.Args[i+1].At, "flag", f.Args[i+1].Bare
			case strings.HasPrefix(a.Text, flag+"=") && a.Literal():
				l.Port, l.PortAt, l.Via = value.Text(a.Text[len(flag)+1:], a.At), a.At, "flag"
			case strings.HasPrefix(a.Text, flag+"=") && a.Value != nil && len(a.Value.Kids) == 2:
				l.Port, l.PortAt, l.Via = a.Value.Kids[1], a.At, "flag"
			case flag == "-p" && strings.HasPrefix(a.Text, "-p") && len(a.Text) > 2 && a.Literal():
				l.Port, l.PortAt, l.Via = value.Text(a.Text[2:], a.At), a.At, "flag"
			case flag == "-p" && strings.HasPrefix(a.Text, "-p$") && a.Value != nil && len(a.Value.Kids) == 2:
				l.Port, l.PortAt, l.Via = a.Value.Kids[1], a.At, "flag"
			}
		}
	}
	if w, ok, missing := f.Flag("-b", "--bind-address"); ok && !missing {
		l.Host, l.HostAt = w.Value, w.At
	}
	return l
}
