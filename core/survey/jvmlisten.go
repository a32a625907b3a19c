package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// socket says where a call of Java or Kotlin has what it listens on.
type socket struct {
	server              string
	address, port, host int // places of the arguments, -1 for none
}

// sockets are the calls of Java and Kotlin that listen: what makes the object,
// a space, and the method; or the function alone. Sources: documentation of
// Java SE 21 (java.net, jdk.httpserver), Javalin 6, Spark 2.9, Vert.x 5,
// Undertow 2, Jetty 12, Ktor 3, Helidon 4; read 2026-11.
var sockets = map[string]socket{
	"HttpServer.create": {"java", 0, -1, -1}, "HttpsServer.create": {"java", 0, -1, -1},
	"HttpServer.create() bind": {"java", 0, -1, -1}, "HttpsServer.create() bind": {"java", 0, -1, -1},
	"HttpServerProvider.provider() createHttpServer": {"java", 0, -1, -1},
	"SimpleFileServer.createFileServer":              {"java", 0, -1, -1},
	"ServerSocket()":                                 {"java", -1, 0, 2}, "ServerSocket() bind": {"java", 0, -1, -1},
	"ServerSocketChannel.open() bind": {"java", 0, -1, -1}, "AsynchronousServerSocketChannel.open() bind": {"java", 0, -1, -1},
	"ServerSocketFactory.getDefault() createServerSocket": {"java", -1, 0, 2}, "SSLServerSocketFactory.getDefault() createServerSocket": {"java", -1, 0, 2},
	"io.javalin.Javalin.create() start":                     {"javalin", -1, 0, -1},
	"spark.Spark.port":                                      {"java", -1, 0, -1},
	"org.eclipse.jetty.server.Server()":                     {"java", 0, -1, -1},
	"io.vertx.core.Vertx.vertx() createHttpServer() listen": {"vert.x", -1, 0, 1},
	"io.undertow.Undertow.builder() addHttpListener":        {"java", -1, 0, 1},
	"org.apache.catalina.startup.Tomcat() setPort":          {"java", -1, 0, -1},
	"io.helidon.webserver.WebServer.builder() port":         {"java", -1, 0, -1},
	"embeddedServer":                                        {"ktor", -1, 1, -1},
	"fi.iki.elonen.NanoHTTPD()":                             {"java", -1, 0, -1},
	"com.linecorp.armeria.Server.builder() http":            {"java", -1, 0, -1},
}

// jvmListener finds a call that listens in Java and Kotlin.
func jvmListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	if !callee.Is(code.Name) && !callee.Is(code.Member) || !jvmNames[callee.Name] || dead(site.Scope, f, live) {
		return nil
	}
	path := ""
	if site.Node.Is(code.New) {
		v := e.Callee(site)
		if v.Kind != value.External {
			return nil
		}
		path = v.Text + "()"
	} else if callee.Is(code.Member) {
		recv := e.Expr(callee.Kid(0), site.Scope)
		for recv.Kind == value.External && recv.Text != "" {
			text := recv.Text
			if _, ok := sockets[text+" "+callee.Name]; ok {
				path = text + " " + callee.Name
				break
			}
			if _, ok := sockets[text+"."+callee.Name]; ok {
				path = text + "." + callee.Name
				break
			}
			// A chain of settings: builder().a().b().
			i := strings.LastIndexByte(text, '.')
			if !strings.HasSuffix(text, "()") || i < 0 || recv.Recv == nil || recv.Recv.Recv == nil {
				break
			}
			recv = recv.Recv.Recv
		}
	} else if imported := starredStatic(f, callee.Name); imported != "" {
		path = imported
	} else if v := e.Callee(site); v.Kind == value.External {
		path = v.Text
		if c := callee.Name[0]; c >= 'A' && c <= 'Z' && f.Lang == code.Kotlin { // an object is made without new
			path = path[strings.LastIndexByte(path, '.')+1:] + "()"
			if _, ok := sockets[v.Text+"()"]; ok {
				path = v.Text + "()"
			}
		}
		if i := strings.LastIndexByte(path, '.'); i > 0 && strings.HasPrefix(path, "io.ktor.") {
			path = path[i+1:]
		}
	}
	s, ok := sockets[path]
	if !ok {
		return nil
	}
	args, keys := e.Arguments(site)
	at := f.At(site.Node)
	if path == "ServerSocket()" && len(args) == 0 || s.address >= 0 && len(args) <= s.address {
		return nil // bound later
	}
	l := &fact.Listener{Server: s.server, Via: "code", At: at, Shared: site.InTry || site.Scope.Func != nil && site.Scope.Func.Name == ""}
	if s.address >= 0 {
		l.Host, l.Port = address(args[s.address], at)
	}
	if s.port >= 0 && s.port < len(args) {
		l.Port = args[s.port]
	}
	if s.host >= 0 && s.host < len(args) && args[s.host].Kind != value.Func {
		l.Host = args[s.host]
	}
	if s.server == "javalin" && len(args) == 2 { // start(host, port)
		l.Host, l.Port = args[0], args[1]
	}
	if v := keys["port"]; v != nil {
		l.Port = v
	}
	if v := keys["host"]; v != nil {
		l.Host = v
	}
	l.PortAt, l.HostAt = placeOf(l.Port, at), placeOf(l.Host, at)
	for _, g := range site.Guards {
		l.Guards, l.Ends = append(l.Guards, e.Guard(g)), append(l.Ends, g.Exit)
	}
	return l
}

// starredStatic is the call of the table that a bare name stands for where
// all of a class is imported: import static spark.Spark.*.
func starredStatic(f *code.File, name string) string {
	for _, i := range f.Imports {
		of, ok := strings.CutSuffix(i.Node.Name, ".*")
		if _, is := sockets[of+"."+name]; ok && is {
			return of + "." + name
		}
	}
	return ""
}

// jvmNames are the last parts of the table.
var jvmNames = func() map[string]bool {
	m := map[string]bool{}
	for k := range sockets {
		k = strings.TrimSuffix(k, "()")
		m[k[strings.LastIndexAny(k, " .")+1:]] = true
	}
	return m
}()

// address takes an InetSocketAddress apart: (port) is any interface, (host,
// port) that one (java.net.InetSocketAddress).
func address(v *value.Value, at place.Span) (host, port *value.Value) {
	switch {
	case v.Kind == value.Num || v.Kind == value.Op && v.Text != "??" && v.Text != "catch":
		return nil, v
	case v.Kind == value.External && (v.Text == "InetSocketAddress()" || v.Text == "InetSocketAddress.createUnresolved()"):
		if len(v.Kids) == 1 {
			return nil, v.Kids[0]
		}
		if len(v.Kids) == 2 {
			return v.Kids[0], v.Kids[1]
		}
	case v.Kind == value.Cond:
		h1, p1 := address(v.Kids[1], at)
		h2, p2 := address(v.Kids[2], at)
		any := func(h *value.Value) *value.Value {
			if h == nil {
				return value.Text("0.0.0.0", at)
			}
			return h
		}
		if h1 != nil || h2 != nil {
			c := *v
			c.Kids = []*value.Value{v.Kids[0], any(h1), any(h2)}
			host = &c
		}
		c := *v
		c.Kids = []*value.Value{v.Kids[0], p1, p2}
		return host, &c
	}
	why := "where the address comes from is not followed"
	if v.Kind == value.Unknown {
		why = v.Text
	}
	return value.NotKnown(why, at), value.NotKnown(why, at)
}
