package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/trace"
	"ubique/core/value"
)

// phpSockets are the calls of PHP that listen: the place of an address, of a
// port, of a host; -1 for none. Sources: PHP manual, "Streams" and "Sockets";
// ReactPHP, Swoole, Workerman, Amp documentation; read 2026-11.
var phpSockets = map[string]socket{
	"stream_socket_server": {"php stream", 0, -1, -1}, "socket_create_listen": {"php raw", -1, 0, -1}, "socket_bind": {"php raw", -1, 2, 1},
	`React\Socket\SocketServer()`: {"php socket", 0, -1, -1}, `React\Socket\TcpServer()`: {"php socket", 0, -1, -1}, `React\Socket\Server()`: {"php socket", 0, -1, -1},
	`Swoole\Http\Server()`: {"php", -1, 1, 0}, `Swoole\Server()`: {"php", -1, 1, 0}, `Swoole\WebSocket\Server()`: {"php", -1, 1, 0}, `OpenSwoole\Http\Server()`: {"php", -1, 1, 0},
	`Workerman\Worker()`: {"php socket", 0, -1, -1},
	trace.PHPServes:      {"php -S", 0, -1, -1}, // a program that starts the web server of PHP
}

// phpListener finds a call that listens in PHP.
func phpListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	if !callee.Is(code.Name) {
		return nil
	}
	path := strings.TrimPrefix(callee.Name, `\`)
	if site.Node.Is(code.New) {
		for _, i := range f.Imports {
			if strings.HasSuffix(i.Node.Name, `\`+path) {
				path = i.Node.Name
			}
		}
		path += "()"
	}
	s, ok := phpSockets[path]
	if !ok || dead(site.Scope, f, live) {
		return nil
	}
	args, _ := e.Arguments(site)
	l := phpFilled(s, args, f.At(site.Node))
	if l == nil {
		return nil
	}
	l.Shared = site.InTry || site.Scope.Func != nil && site.Scope.Func.Name == ""
	return guardedBy(l, e, site)
}

// phpFilled is the listener that a call of the table makes of what it is given;
// nil where it listens nowhere.
func phpFilled(s socket, args []*value.Value, at place.Span) *fact.Listener {
	l := &fact.Listener{Server: s.server, Via: "code", At: at}
	if s.address >= 0 && s.address < len(args) {
		l.Bind = args[s.address]
	}
	if s.port >= 0 && s.port < len(args) {
		l.Port = args[s.port]
	}
	if s.host >= 0 && s.host < len(args) {
		l.Host = args[s.host]
	}
	if s.server == "php raw" && len(args) == 2 && s.host == 1 { // socket_bind without a port
		if of := args[0]; of.Kind == value.External && of.Text == "socket_create()" && len(of.Kids) > 0 && of.Kids[0].Text == "AF_UNIX" {
			l.Bind, l.Host = socketFile(args[1], at), nil
		}
	}
	if l.Bind == nil && l.Port == nil {
		return nil
	}
	l.PortAt, l.HostAt = placeOf(l.Port, placeOf(l.Bind, at)), placeOf(l.Host, placeOf(l.Bind, at))
	return l
}

// phpPath is the key of the table for a call that a program comes to while it is
// gone through.
func phpPath(callee *value.Value, made bool) (s socket, ok bool) {
	name := callee.Text
	if made {
		name += "()"
	}
	s, ok = phpSockets[name]
	return s, ok
}
