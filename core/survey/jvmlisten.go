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
// Undertow 2, Jetty 12, Ktor 3, Helidon 4, http4k 6; read 2026-11.
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
	"org.eclipse.jetty.server.ServerConnector() setPort":    {"java", -1, 0, -1},
	"io.netty.bootstrap.ServerBootstrap() bind":             {"java", 0, -1, -1},
	"io.vertx.core.Vertx.vertx().createHttpServer() listen": {"vert.x", -1, 0, 1},
	"io.undertow.Undertow.builder() addHttpListener":        {"java", -1, 0, 1},
	"org.apache.catalina.startup.Tomcat() setPort":          {"java", -1, 0, -1},
	"io.helidon.webserver.WebServer.builder() build":        {"java", -1, -1, -1},
	"io.ktor.server.engine.embeddedServer":                  {"ktor", -1, 1, -1},
	"fi.iki.elonen.NanoHTTPD()":                             {"java", -1, 0, -1},
	"com.linecorp.armeria.Server.builder() http":            {"java", -1, 0, -1},
	"org.http4k.server.SunHttp()":                           {"http4k", -1, 0, -1},
	"org.http4k.server.Jetty()":                             {"http4k", -1, 0, -1},
	"org.http4k.server.Undertow()":                          {"http4k", -1, 0, -1},
	"org.http4k.server.Netty()":                             {"http4k", -1, 0, -1},
	"org.http4k.server.Helidon()":                           {"http4k", -1, 0, -1},
	"org.http4k.server.KtorCIO()":                           {"http4k", -1, 0, -1},
	"org.http4k.server.KtorNetty()":                         {"http4k", -1, 0, -1},
	"org.http4k.server.ApacheServer()":                      {"http4k", -1, 0, -1},
}

// setters are the methods of a chain of settings, or of the options that it is
// made with, that set the port and the interface of a call of the table. A
// chain without them is set by a file where options is empty (Helidon,
// "WebServer Configuration"; Vert.x, "Writing HTTP servers"; read 2026-11).
var setters = map[string]struct{ port, host, options string }{
	"io.vertx.core.Vertx.vertx().createHttpServer() listen": {"setPort", "setHost", ".createHttpServer()"},
	"io.helidon.webserver.WebServer.builder() build":        {"port", "host", ""},
}

// jvmListener finds a call that listens in Java and Kotlin.
func jvmListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	if !callee.Is(code.Name) && !callee.Is(code.Member) || !jvmNames[callee.Name] || dead(site.Scope, f, live) {
		return nil
	}
	path := ""
	var recv *value.Value
	if site.Node.Is(code.New) {
		v := e.Callee(site)
		if v.Kind != value.External {
			return nil
		}
		path = listed(f, v.Text+"()")
	} else if callee.Is(code.Member) {
		recv = e.Expr(callee.Kid(0), site.Scope)
		for chain := recv; chain.Kind == value.External && chain.Text != ""; chain = chain.Recv.Recv {
			text := chain.Text
			if path = listed(f, text+" "+callee.Name); path != "" {
				break
			}
			if path = listed(f, text+"."+callee.Name); path != "" {
				break
			}
			// A chain of settings: builder().a().b().
			i := strings.LastIndexByte(text, '.')
			if !strings.HasSuffix(text, "()") || i < 0 || chain.Recv == nil || chain.Recv.Recv == nil {
				break
			}
		}
	} else if imported := listed(f, callee.Name); imported != "" {
		path = imported
	} else if v := e.Callee(site); v.Kind == value.External {
		path = listed(f, v.Text)
		if c := callee.Name[0]; c >= 'A' && c <= 'Z' && f.Lang == code.Kotlin { // an object is made without new
			path = listed(f, v.Text+"()")
		}
	}
	if _, ok := sockets[path]; !ok {
		return nil
	}
	args, keys := e.Arguments(site)
	l := jvmFilled(e, f, path, recv, args, keys, f.At(site.Node))
	if l == nil {
		return nil
	}
	l.Shared = site.InTry || site.Scope.Func != nil && site.Scope.Func.Name == ""
	return guardedBy(l, e, site)
}

// jvmFilled is the listener that a call of the table makes of what it is given;
// nil where it listens nowhere.
func jvmFilled(e *value.Eval, f *code.File, path string, recv *value.Value, args []*value.Value, keys map[string]*value.Value, at place.Span) *fact.Listener {
	s := sockets[path]
	if path == "ServerSocket()" && len(args) == 0 || s.address >= 0 && len(args) <= s.address {
		return nil // bound later
	}
	l := &fact.Listener{Server: s.server, Via: "code", At: at}
	if s.address >= 0 {
		if file := jvmSocketFile(args[s.address]); file != nil { // JEP 380
			l.Bind = socketFile(file, at)
			l.PortAt, l.HostAt = placeOf(file, at), placeOf(file, at)
			return l
		}
		l.Host, l.Port = address(args[s.address], at)
	}
	if s.port >= 0 && s.port < len(args) {
		l.Port = args[s.port]
	}
	if s.host >= 0 && s.host < len(args) && args[s.host].Kind != value.Func {
		l.Host = args[s.host]
	}
	if by, ok := setters[path]; ok {
		if l.Port == nil {
			l.Port = set(recv, by.port, by.options)
		}
		if l.Host == nil {
			l.Host = set(recv, by.host, by.options)
		}
		if l.Port == nil && by.options == "" {
			return nil
		}
	}
	if path == "io.netty.bootstrap.ServerBootstrap() bind" && len(args) == 2 { // bind(host, port)
		l.Host, l.Port = args[0], args[1]
	}
	if strings.HasSuffix(path, " setPort") && strings.HasPrefix(path, "org.eclipse.jetty.") { // and the host beside it
		l.Host = beside(e, f, at, "setHost")
	}
	if s.server == "javalin" && len(args) == 2 { // start(host, port)
		l.Host, l.Port = args[0], args[1]
	}
	if s.server == "javalin" && len(args) == 0 { // config.jetty.defaultPort = 8080
		for _, x := range f.Sets {
			if !x.Node.Is(code.Member) || !x.Node.Kid(0).Is(code.Member) || x.Node.Kids[0].Name != "jetty" {
				continue
			}
			switch x.Node.Name {
			case "defaultPort":
				l.Port = e.Expr(x.Value, x.Scope)
			case "defaultHost":
				l.Host = e.Expr(x.Value, x.Scope)
			}
		}
	}
	if v := keys["port"]; v != nil {
		l.Port = v
	}
	if v := keys["host"]; v != nil {
		l.Host = v
	}
	l.PortAt, l.HostAt = placeOf(l.Port, at), placeOf(l.Host, at)
	return l
}

// beside gives what another method of the object whose method is called at a place is given,
// in the same function; nil where it is not called.
func beside(e *value.Eval, f *code.File, at place.Span, method string) *value.Value {
	var of *code.Node
	var scope *code.Scope
	for _, site := range f.Calls {
		if f.At(site.Node) == at && site.Node.Kid(0).Is(code.Member) {
			of, scope = site.Node.Kids[0].Kid(0), site.Scope
		}
	}
	if !of.Is(code.Name) {
		return nil
	}
	for _, site := range f.Calls {
		c := site.Node.Kid(0)
		if c.Is(code.Member) && c.Name == method && c.Kid(0).Is(code.Name) && c.Kids[0].Name == of.Name && site.Scope.Func == scope.Func && site.Node.Kid(1) != nil {
			return e.Expr(site.Node.Kids[1], site.Scope)
		}
	}
	return nil
}

// jvmPath is the key of the table for a call that a program comes to while it is
// gone through; empty for none.
func jvmPath(f *code.File, callee *value.Value, made bool) string {
	if callee == nil || callee.Kind != value.External {
		return ""
	}
	if made {
		return listed(f, callee.Text+"()")
	}
	i := strings.LastIndexByte(callee.Text, '.')
	if i < 0 {
		return listed(f, callee.Text)
	}
	method := callee.Text[i+1:]
	for chain := callee.Recv; chain != nil && chain.Kind == value.External && chain.Text != ""; {
		if p := listed(f, chain.Text+" "+method); p != "" {
			return p
		}
		if p := listed(f, chain.Text+"."+method); p != "" {
			return p
		}
		if !strings.HasSuffix(chain.Text, "()") || chain.Recv == nil {
			break
		}
		chain = chain.Recv.Recv
	}
	return ""
}

// set is what a method of a chain, or of the options that a call of the chain
// is given, was given; nil where it was not called, not known where there are
// options that do not show it.
func set(chain *value.Value, method, options string) *value.Value {
	for v := chain; v != nil; v = v.Recv {
		if strings.HasSuffix(v.Text, "."+method+"()") && len(v.Kids) == 1 {
			return v.Kids[0]
		}
		if options == "" || !strings.HasSuffix(v.Text, options) || len(v.Kids) == 0 {
			continue
		}
		if w := set(v.Kids[0], method, ""); w != nil {
			return w
		}
		return value.NotKnown("what the options of "+options[1:]+" say", v.Kids[0].At)
	}
	return nil
}

// listed is the key of the table for the path of a call, which stands there
// with its package where all of a package or of a class is imported: import
// io.vertx.core.*, import static spark.Spark.*. Empty where the table does not
// have it.
func listed(f *code.File, path string) string {
	if _, ok := sockets[path]; ok {
		return path
	}
	for _, i := range f.Imports {
		if of, ok := strings.CutSuffix(i.Node.Name, ".*"); ok {
			if _, ok := sockets[of+"."+path]; ok {
				return of + "." + path
			}
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

// jvmSocketFile is the path in the address of a socket that is a file; nil where the
// address is another one (java.net.UnixDomainSocketAddress, Java SE 16).
func jvmSocketFile(v *value.Value) *value.Value {
	if v.Kind != value.External || v.Text != "UnixDomainSocketAddress.of()" || len(v.Kids) != 1 {
		return nil
	}
	file := v.Kids[0]
	if file.Kind == value.External && (file.Text == "Path.of()" || file.Text == "Paths.get()") && len(file.Kids) == 1 {
		file = file.Kids[0]
	}
	return file
}

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
