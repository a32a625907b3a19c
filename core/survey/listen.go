package survey

import (
	"bytes"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// shape says where a listening call has its host and port.
type shape struct {
	server     string
	port, host int    // places of the arguments, -1 for none
	options    int    // the argument that may be an object with port and host, -1 for none
	pair       int    // the argument that is a (host, port) pair, -1 for none
	keyPort    string // names in keywords and options
	keyHost    string
	dev        bool
	bind       string // a keyword that holds a whole address
	config     int    // the place, from 1, of an argument whose attribute bind holds one
	address    int    // the place, from 1, of an argument that is a whole address
	within     string // the key of the options under which the port and the host stand
	file       int    // the place, from 1, of an argument that is the path of a socket
	keyFile    string // and its name
}

var none = shape{port: -1, host: -1, options: -1, pair: -1}

func positional(server string, port, host int) shape {
	s := none
	s.server, s.port, s.host, s.options, s.keyPort, s.keyHost = server, port, host, -1, "port", "host"
	return s
}

func nodeListen(server string) shape {
	s := positional(server, 0, 1)
	s.options = 0
	return s
}

func keywords(server string, port, host int, dev bool) shape {
	s := positional(server, port, host)
	s.dev = dev
	return s
}

func pair(server string, at int) shape {
	s := none
	s.server, s.pair = server, at
	return s
}

// onFile is a call with an argument that is the path of a socket.
func onFile(at int, name string) shape {
	s := positional("aiohttp", -1, -1)
	s.file, s.keyFile = at, name
	return s
}

// atAddress is a call with an argument that is a whole address.
func atAddress(server string, at int) shape {
	s := none
	s.server, s.address = server, at
	return s
}

// launched is how the interfaces of Gradio are started.
var launched = shape{server: "gradio", port: -1, host: -1, options: -1, pair: -1, keyPort: "server_port", keyHost: "server_name"}

func optioned(server string, at int, host string) shape {
	s := none
	s.server, s.options, s.keyPort, s.keyHost = server, at, "port", host
	return s
}

// listening says which calls listen: by what makes the object, a space, and
// the method; or by the function alone. Sources: the documentation of each
// package, read 2026-11; what each does by itself is in fact.Servers.
var listening = map[string]shape{
	"express() listen":                                nodeListen("node"),
	"express.default() listen":                        nodeListen("node"),
	"http.createServer() listen":                      nodeListen("node"),
	"http.Server() listen":                            nodeListen("node"),
	"https.createServer() listen":                     nodeListen("node"),
	"spdy.createServer() listen":                      nodeListen("node"),
	"https.Server() listen":                           nodeListen("node"),
	"http2.createServer() listen":                     nodeListen("node"),
	"http2.createSecureServer() listen":               nodeListen("node"),
	"net.createServer() listen":                       nodeListen("node"),
	"koa() listen":                                    nodeListen("node"),
	"polka() listen":                                  nodeListen("node"),
	"connect() listen":                                nodeListen("node"),
	"restify.createServer() listen":                   nodeListen("node"),
	"json-server.create() listen":                     nodeListen("node"),
	"@nestjs/core.NestFactory.create() listen":        nodeListen("node"),
	"fastify() listen":                                optioned("fastify", 0, "host"),
	"fastify.fastify() listen":                        optioned("fastify", 0, "host"),
	"fastify.Fastify() listen":                        optioned("fastify", 0, "host"),
	"@hono/node-server.serve":                         optioned("hono", 0, "hostname"),
	"srvx.serve":                                      optioned("srvx", 0, "hostname"),
	"srvx/node.serve":                                 optioned("srvx", 0, "hostname"),
	"h3.serve":                                        optioned("srvx", 1, "hostname"),
	"h3/node.serve":                                   optioned("srvx", 1, "hostname"),
	"@hono/node-server.createAdaptorServer() listen":  nodeListen("node"),
	"socket.io.Server() listen":                       positional("node", 0, -1),
	"socket.io() listen":                              positional("node", 0, -1),
	"socket.io() attach":                              positional("node", 0, -1),
	"socket.io.Server() attach":                       positional("node", 0, -1),
	"socket.io.Server":                                positional("node", 0, -1),
	"socket.io":                                       positional("node", 0, -1),
	"@hapi/hapi.server":                               optioned("node options", 0, "host"),
	"@hapi/hapi.Server":                               optioned("node options", 0, "host"),
	"ws.WebSocketServer":                              optioned("node options", 0, "host"),
	"ws.Server":                                       optioned("node options", 0, "host"),
	"@apollo/server/standalone.startStandaloneServer": {server: "apollo", port: -1, host: -1, options: 1, pair: -1, keyPort: "port", keyHost: "host", within: "listen"},
	"tls.createServer() listen":                       nodeListen("node"),
	"net.Server() listen":                             nodeListen("node"),
	"@trpc/server/adapters/standalone.createHTTPServer() listen": nodeListen("node"),
	"restana() start":                                        nodeListen("node"),
	"@tinyhttp/app.App() listen":                             positional("node", 0, 2),
	"@feathersjs/express() listen":                           nodeListen("node"),
	"@feathersjs/express.default() listen":                   nodeListen("node"),
	"@feathersjs/koa.koa() listen":                           nodeListen("node"),
	"http-proxy.createServer() listen":                       positional("node", 0, 1),
	"http-proxy.createProxyServer() listen":                  positional("node", 0, 1),
	"@grpc/grpc-js.Server() bindAsync":                       atAddress("grpc", 1),
	"apollo-server.ApolloServer() listen":                    nodeListen("node"),
	"Deno.serve":                                             optioned("deno", 0, "hostname"),
	"Deno.listen":                                            optioned("deno", 0, "hostname"),
	"Deno.listenTls":                                         optioned("deno", 0, "hostname"),
	"Bun.listen":                                             optioned("bun", 0, "hostname"),
	"Bun.serve":                                              optioned("bun", 0, "hostname"),
	"bun.serve":                                              optioned("bun", 0, "hostname"),
	"elysia.Elysia() listen":                                 {server: "bun", port: 0, host: -1, options: 0, pair: -1, keyPort: "port", keyHost: "hostname"},
	"@oak/oak.Application() listen":                          optioned("deno", 0, "hostname"),
	"@oak/oak/application.Application() listen":              optioned("deno", 0, "hostname"),
	"flask.Flask() run":                                      keywords("flask", 1, 0, true),
	"quart.Quart() run":                                      keywords("quart", 1, 0, true),
	"flask_socketio.SocketIO() run":                          keywords("flask", 2, 1, false),
	"uvicorn.run":                                            keywords("uvicorn.run", 2, 1, false),
	"uvicorn.Config":                                         keywords("uvicorn.run", 2, 1, false),
	"waitress.server.create_server":                          {server: "waitress.serve", port: -1, host: -1, options: -1, pair: -1, keyPort: "port", keyHost: "host", bind: "listen"},
	"tornado.netutil.bind_sockets":                           {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"cherrypy.quickstart":                                    positional("cherrypy", -1, -1),
	"cherrypy.engine.start":                                  positional("cherrypy", -1, -1),
	"waitress.serve":                                         {server: "waitress.serve", port: -1, host: -1, options: -1, pair: -1, keyPort: "port", keyHost: "host", bind: "listen"},
	"waitress.create_server":                                 {server: "waitress.serve", port: -1, host: -1, options: -1, pair: -1, keyPort: "port", keyHost: "host", bind: "listen"},
	"aiohttp.web.run_app":                                    keywords("aiohttp run", -1, -1, false),
	"aiohttp.web.TCPSite":                                    keywords("aiohttp", 2, 1, false),
	"hypercorn.asyncio.serve":                                {server: "hypercorn", port: -1, host: -1, options: -1, pair: -1, config: 2},
	"bottle.run":                                             keywords("bottle", -1, -1, false),
	"bottle.Bottle() run":                                    keywords("bottle", -1, -1, false),
	"bottle.default_app() run":                               keywords("bottle", -1, -1, false),
	"bottle.app() run":                                       keywords("bottle", -1, -1, false),
	"sanic.Sanic() run":                                      keywords("sanic", 1, 0, false),
	"tornado.web.Application() listen":                       {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"tornado.httpserver.HTTPServer() listen":                 {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"tornado.tcpserver.TCPServer() listen":                   {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"tornado.tcpserver.TCPServer() bind":                     {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"tornado.httpserver.HTTPServer() bind":                   {server: "tornado", port: 0, host: 1, options: -1, pair: -1, keyPort: "port", keyHost: "address"},
	"socket.socket() bind":                                   pair("socketserver", 0),
	"gevent.socket.socket() bind":                            pair("socketserver", 0),
	"eventlet.green.socket.socket() bind":                    pair("socketserver", 0),
	"socket.create_server":                                   pair("socketserver", 0),
	"asyncio.get_event_loop() create_server":                 positional("asyncio", 2, 1),
	"asyncio.get_running_loop() create_server":               positional("asyncio", 2, 1),
	"asyncio.new_event_loop() create_server":                 positional("asyncio", 2, 1),
	"wsgiref.simple_server.WSGIServer":                       pair("http server class", 0),
	"xmlrpc.server.DocXMLRPCServer":                          pair("socketserver", 0),
	"multiprocessing.connection.Listener":                    pair("socketserver", 0),
	"werkzeug.serving.make_server":                           keywords("socketserver", 1, 0, false),
	"gevent.server.StreamServer":                             pair("socketserver", 0),
	"cheroot.server.HTTPServer":                              pair("socketserver", 0),
	"twisted.internet.reactor.listenUNIX":                    onFile(1, "address"),
	"twisted.internet.reactor.listenSSL":                     {server: "socketserver", port: 0, host: 4, options: -1, pair: -1, keyPort: "port", keyHost: "interface"},
	"wsgiref.simple_server.make_server":                      positional("socketserver", 1, 0),
	"http.server.HTTPServer":                                 pair("http server class", 0),
	"http.server.ThreadingHTTPServer":                        pair("http server class", 0),
	"http.server.test":                                       {server: "http.server", port: 3, host: 4, options: -1, pair: -1, keyPort: "port", keyHost: "bind"},
	"socketserver.TCPServer":                                 pair("http server class", 0),
	"socketserver.ThreadingTCPServer":                        pair("http server class", 0),
	"socketserver.UnixStreamServer":                          pair("socketserver", 0),
	"socketserver.ThreadingUnixStreamServer":                 pair("socketserver", 0),
	"tornado.netutil.bind_unix_socket":                       pair("socketserver", 0),
	"asyncio.start_unix_server":                              onFile(2, "path"),
	"asyncio.get_event_loop().create_unix_server":            onFile(2, "path"),
	"asyncio.get_running_loop().create_unix_server":          onFile(2, "path"),
	"aiohttp.web.UnixSite":                                   onFile(2, "path"),
	"asyncio.start_server":                                   positional("asyncio", 2, 1),
	"gevent.pywsgi.WSGIServer":                               pair("socketserver", 0),
	"gevent.WSGIServer":                                      pair("socketserver", 0),
	"websockets.serve":                                       positional("asyncio", 2, 1),
	"websockets.server.serve":                                positional("asyncio", 2, 1),
	"websockets.asyncio.server.serve":                        positional("asyncio", 2, 1),
	"websockets.sync.server.serve":                           positional("socketserver", 2, 1),
	"eventlet.listen":                                        pair("socketserver", 0),
	"xmlrpc.server.SimpleXMLRPCServer":                       pair("socketserver", 0),
	"cheroot.wsgi.Server":                                    pair("socketserver", 0),
	"cheroot.wsgi.WSGIServer":                                pair("socketserver", 0),
	"twisted.internet.endpoints.serverFromString() listen":   {server: "socketserver", port: -1, host: -1, options: -1, pair: -1},
	"twisted.internet.endpoints.TCP4ServerEndpoint() listen": {server: "socketserver", port: -1, host: -1, options: -1, pair: -1},
	"twisted.internet.endpoints.TCP6ServerEndpoint() listen": {server: "socketserver", port: -1, host: -1, options: -1, pair: -1},
	"twisted.internet.reactor.listenTCP":                     {server: "socketserver", port: 0, host: 3, options: -1, pair: -1, keyPort: "port", keyHost: "interface"},
	"grpc.server() add_insecure_port":                        atAddress("grpc", 1),
	"grpc.server() add_secure_port":                          atAddress("grpc", 1),
	"grpc.aio.server() add_insecure_port":                    atAddress("grpc", 1),
	"grpc.aio.server() add_secure_port":                      atAddress("grpc", 1),
	"dash.Dash() run":                                        keywords("dash", 1, 0, true),
	"nicegui.ui.run":                                         keywords("nicegui", -1, -1, false),
	"gradio.Blocks() launch":                                 launched,
	"gradio.Interface() launch":                              launched,
	"gradio.ChatInterface() launch":                          launched,
	"gradio.TabbedInterface() launch":                        launched,
	"werkzeug.serving.run_simple":                            keywords("flask", 1, 0, true),
	"werkzeug.run_simple":                                    keywords("flask", 1, 0, true),
}

// handoffs are calls that put a listener of their own in front: app.listen is
// not called, but a function of the framework is.
var appNames = map[string]bool{"app": true, "server": true, "httpServer": true, "fastify": true, "httpsServer": true, "srv": true, "api": true}

// lookupListen finds the shape of a call from what is called.
func lookupListen(callee *value.Value) (shape, bool) {
	if callee.Kind != value.External || strings.HasSuffix(callee.Text, "socket.socket().bind") && datagram(callee) {
		return none, false
	}
	if s, ok := listening[callee.Text]; ok && s.server != "" {
		return s, true
	}
	dot := strings.LastIndexByte(callee.Text, '.')
	if dot < 0 {
		return none, false
	}
	method, head := callee.Text[dot+1:], callee.Text[:dot]
	if s, ok := listening[head+" "+method]; ok {
		return s, true
	}
	// Chained calls give the same object: new Koa().use(x).listen(…).
	if i := strings.Index(head, "()"); i >= 0 {
		if s, ok := listening[head[:i+2]+" "+method]; ok {
			return s, true
		}
	}
	return none, false
}

// datagram reports whether a socket of Python is made for single messages: nothing
// connects to it (Python 3.14, "socket", SOCK_DGRAM).
func datagram(v *value.Value) bool {
	found := false
	look := func(k *value.Value) {
		found = found || k.Kind == value.External && (strings.HasSuffix(k.Text, "SOCK_DGRAM") || strings.HasSuffix(k.Text, "SOCK_RAW"))
	}
	for x := v; x != nil && !found; x = x.Recv {
		x.Walk(look)
		x.Keyword("type").Walk(look)
	}
	return found
}

// finders are the functions that find a call that listens, by language; the
// others are found by the table of calls.
var finders = map[code.Language]func(*value.Eval, *code.File, code.Site, func(string) bool) *fact.Listener{
	code.Java: jvmListener, code.Kotlin: jvmListener, code.PHP: phpListener, code.Ruby: rubyListener, code.Go: goListener, code.Rust: rustListener,
}

// Listeners finds the calls that listen in the code that a start reaches.
func Listeners(e *value.Eval, files []*code.File, process string, live func(string) bool) []*fact.Listener {
	var list []*fact.Listener
	for _, f := range files {
		if f.Skimmed {
			continue
		}
		if f.Lang == code.CSharp || f.Lang == code.Elixir { // looked at as a whole
			continue
		}
		find := finders[f.Lang]
		if find == nil {
			find = listener
		}
		add := func(l *fact.Listener) {
			if l != nil {
				l.Process = process
				list = append(list, l)
			}
		}
		for _, site := range f.Calls {
			l := find(e, f, site, live)
			if l == nil {
				continue
			}
			turns := e.Turns(site)
			if len(turns) == 0 {
				add(l)
			}
			for _, t := range turns {
				e.Within(t, func() {
					if l := find(e, f, site, live); l != nil {
						if t.Test != nil {
							l.Guards, l.Ends = append(l.Guards, t.Test), append(l.Ends, false)
						}
						add(l)
					}
				})
			}
		}
	}
	return list
}

// candidates are the last parts of everything in the table, so that most
// calls are told apart without evaluating anything.
var candidates = func() map[string]bool {
	m := map[string]bool{"TCPServer": true}
	for k := range listening {
		if i := strings.LastIndexAny(k, " ."); i >= 0 {
			m[k[i+1:]] = true
		}
	}
	return m
}()

// moduleCall reports whether what is called is a whole module that listens by
// itself: require("socket.io")(3000).
func moduleCall(callee *code.Node, s *code.Scope) bool {
	n := callee
	if n.Is(code.Name) {
		for x := s; x != nil; x = x.Parent {
			for _, b := range x.Names[n.Name] {
				if b.Import != nil && (b.Name2 == nil || b.Name2.Name == "default" || b.Name2.Name == "*") {
					_, ok := listening[b.Import.Name]
					return ok
				}
				n = b.Value
			}
			if n != callee {
				break
			}
		}
	}
	if !n.Is(code.Call) || !n.Kid(0).Is(code.Name) || n.Kids[0].Name != "require" || !n.Kid(1).Is(code.String) {
		return false
	}
	_, ok := listening[n.Kids[1].Name]
	return ok
}

// overFastify reports whether an application of Nest runs on Fastify (Nest,
// "Performance (Fastify)": it listens on localhost where no host is given).
func overFastify(v *value.Value) bool {
	for ; v != nil; v = v.Recv {
		if v.Text == "@nestjs/core.NestFactory.create()" {
			for _, a := range v.Kids {
				if strings.HasPrefix(a.Text, "@nestjs/platform-fastify.") {
					return true
				}
			}
		}
	}
	return false
}

func listener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	name := ""
	if callee.Is(code.Name) || callee.Is(code.Member) {
		name = callee.Name
	}
	if !candidates[name] && !aliased(f, name) && !moduleCall(callee, site.Scope) {
		return nil
	}
	v := e.Callee(site)
	for v.Kind == value.Op && (v.Text == "||" || v.Text == "??") && len(v.Kids) == 2 { // what is given, or one of its own
		if v.Kids[0].Kind == value.External {
			v = v.Kids[0]
		} else {
			v = v.Kids[1]
		}
	}
	var class *value.Value
	if v.Kind == value.Class { // a class of the tree that comes from a server
		for _, b := range e.Bases(v) {
			if _, ok := lookupListen(b); ok {
				class, v = v, b
				break
			}
		}
	}
	if name == "run" && callee.Is(code.Member) && f.Lang == code.Python {
		if l := embeddedGunicorn(e, f, site, live); l != nil {
			return l
		}
	}
	s, ok := lookupListen(v)
	if !ok {
		// An object that could not be followed, with the method and the name
		// that servers have.
		if name != "listen" || f.Lang == code.Python || v.Kind != value.Unknown || !callee.Kid(0).Is(code.Name) && !callee.Kid(0).Is(code.Member) || !appNames[callee.Kids[0].Name] || len(site.Node.Args()) == 0 {
			return nil
		}
		s = nodeListen("node")
	}
	if dead(site.Scope, f, live) {
		return nil
	}
	args, keys := e.Arguments(site)
	if class != nil {
		args, keys = e.BaseArguments(class, args, keys)
	}
	if l := filled(e, f, site, s, v, args, keys); l != nil {
		l.Shared = site.InTry || site.Scope.Func != nil && site.Scope.Func.Name == ""
		return guardedBy(l, e, site)
	}
	return nil
}

// filled is the listener that a call makes of what it is given; nil where that
// listens nowhere by itself.
func filled(e *value.Eval, f *code.File, site code.Site, s shape, v *value.Value, args []*value.Value, keys map[string]*value.Value) *fact.Listener {
	l := &fact.Listener{Server: s.server, Via: "code", At: f.At(site.Node), Dev: s.dev}
	name := site.Node.Kid(0).Name
	if s.server == "node" && overFastify(v) {
		l.Server = "fastify" // what it is built on decides the interface
	}
	if s.options >= 0 && s.options < len(args) && f.Lang != code.Python {
		if o := args[s.options].Merged(); o != nil {
			args[s.options] = o
		}
	}
	nodeArg := func(i int) *code.Node {
		if i >= 0 && i < len(site.Node.Args()) {
			return site.Node.Args()[i]
		}
		return nil
	}
	if (name == "Server" || name == "attach" || v.Text == "socket.io") && s.server == "node" && (len(args) == 0 || !portLike(args[0])) {
		return nil // attached to a server that listens by itself
	}
	if s.server == "node" && s.options == 0 && len(args) == 0 {
		l.Port = value.Text("", l.At)
		l.Port.Kind = value.Undef
	}
	if s.config > 0 && s.config <= len(site.Node.Args()) {
		l.Bind = boundTo(e, f, site.Node.Args()[s.config-1], site)
		if s.config <= len(args) && args[s.config-1].Props != nil { // the program was gone through
			if set := args[s.config-1].Props.Get("bind"); set != nil {
				if l.Bind = set; set.Kind == value.List && len(set.Kids) > 0 {
					l.Bind = set.Kids[0]
				}
			}
		}
	}
	if s.address > 0 && s.address <= len(args) {
		l.Bind = args[s.address-1]
	} else if s.pair >= 0 && s.pair < len(args) && ofFiles(v, keys) {
		l.Bind = socketFile(args[s.pair], l.At)
	} else if s.pair >= 0 && s.pair < len(args) {
		if p := e.Tuple(args[s.pair]); p.Element(1) != nil {
			l.Host, l.Port = p.Element(0), p.Element(1)
		} else if p.Kind == value.Str { // the path of a socket
			return nil
		} else {
			l.Port = p
		}
	} else if s.options >= 0 && s.options < len(args) && (args[s.options].Kind == value.Object || s.port < 0) {
		o := args[s.options]
		if s.within != "" && o.Kind == value.Object {
			if o = o.Get(s.within); o == nil {
				o = &value.Value{Kind: value.Object, At: l.At}
			}
		}
		if l.Server == "node" {
			l.Server = "node options"
		}
		if o.Kind == value.Object {
			l.Port, l.Host = o.Get(s.keyPort), o.Get(s.keyHost)
			key := "path"
			if s.server == "bun" {
				key = "unix"
			}
			if socket := o.Get(key); l.Port == nil && socket != nil && (name == "listen" || s.server == "bun" || s.server == "deno") {
				l.Port, l.Host, l.Bind = nil, nil, socketFile(socket, l.At)
				l.PortAt, l.HostAt = placeOf(socket, l.At), placeOf(socket, l.At)
				return l
			}
			if l.Port == nil {
				for i, k := range o.Keys {
					if k == "..." {
						l.Port = o.Kids[i]
					}
				}
			}
			if name == "Server" || name == "WebSocketServer" {
				if l.Port == nil { // attached to another server
					return nil
				}
			}
			if l.Server == "node options" && l.Port == nil {
				l.Port = &value.Value{Kind: value.Undef}
			}
			if l.Server == "fastify" && l.Port == nil {
				l.Port = value.NotKnown("listen() without a port", l.At)
			}
		} else {
			if name == "Server" || name == "WebSocketServer" {
				return nil
			}
			if o.Kind == value.Func { // the handler alone
				o = nil
			}
			if o != nil && (s.server != "hono" || o.Kind != value.External) { // an application itself has no port
				l.Port = o
			}
		}
	} else {
		if s.port >= 0 && s.port < len(args) {
			l.Port = args[s.port]
		}
		if s.host >= 0 && s.host < len(args) {
			if a := args[s.host]; a.Kind != value.Func && (len(args) != len(site.Node.Args()) || !nodeArg(s.host).Is(code.Func)) {
				l.Host = a
			}
		}
		if v := keys[s.keyPort]; v != nil && s.keyPort != "" {
			l.Port = v
		}
		if v := keys[s.keyHost]; v != nil && s.keyHost != "" {
			l.Host = v
		}
		if v := keys[s.bind]; v != nil && s.bind != "" {
			l.Bind = v
		}
		if keys["fd"] != nil {
			return nil
		}
		for _, name := range []string{"sock", "sockets"} { // one that the program has bound itself
			if v := keys[name]; v != nil && v.Kind != value.Null {
				return nil
			}
		}
		for _, name := range []string{"uds", "unix_socket"} {
			switch v := keys[name]; {
			case v == nil || v.Kind == value.Null:
			case v.Kind == value.Str:
				l.Bind = socketFile(v, l.At)
			default:
				l.Bind = value.NotKnown("whether it listens on a socket file", l.At)
			}
		}
		if v := keys["**"]; v != nil && l.Port == nil {
			l.Port = value.NotKnown("arguments that are spread", l.At)
		}
	}
	if s.server == "node" && l.Port != nil && l.Port.Kind == value.Func {
		l.Port = &value.Value{Kind: value.Undef, At: l.Port.At}
	}
	if l.Port == nil && len(args) > 0 && s.server == "fastify" {
		l.Port = args[0]
	}
	l.PortAt, l.HostAt = placeOf(l.Port, placeOf(l.Bind, l.At)), placeOf(l.Host, placeOf(l.Bind, l.At))
	for _, a := range site.Node.Args() {
		if a.Is(code.Keyword) && a.Name == s.keyPort {
			l.PortAt = f.At(a.Kid(0))
		}
		if a.Is(code.Keyword) && a.Name == s.keyHost {
			l.HostAt = f.At(a.Kid(0))
		}
	}
	if l.Server == "http server class" && bytes.Contains(f.Src, []byte("address_family")) { // a class that says which
		l.Server = "socketserver"
	}
	if strings.HasPrefix(v.Text, "twisted.internet.endpoints.") {
		endpoint(l, v.Recv)
	}
	if s.server == "cherrypy" {
		cherryPy(e, f, l, v, args, keys)
	}
	if v.Text == "flask.Flask().run" || v.Text == "quart.Quart().run" {
		l.Named = serverName(e, v)
	}
	if socket := keys["path"]; strings.HasPrefix(s.server, "aiohttp") && socket != nil && socket.Kind != value.Null {
		l.Bind = socketFile(socket, l.At)
	}
	if s.file > 0 { // the path of the socket, by its place or its name
		path := keys[s.keyFile]
		if path == nil && s.file <= len(args) {
			path = args[s.file-1]
		}
		if path == nil { // a socket that the program has bound itself
			return nil
		}
		l.Bind = socketFile(path, l.At)
	}
	return l
}

// socketFile is the address of a socket that is a file.
func socketFile(path *value.Value, at place.Span) *value.Value {
	return value.Concat(value.Text("unix:", at), path)
}

// ofFiles reports whether a call of Python makes sockets that are files: by its class, or
// by the family that it or the socket was given (Python 3.14, "socket", "socketserver").
func ofFiles(v *value.Value, keys map[string]*value.Value) bool {
	unix := func(x *value.Value) bool { return x != nil && x.Text == "socket.AF_UNIX" }
	return strings.Contains(v.Text, "Unix") || v.Text == "tornado.netutil.bind_unix_socket" || unix(keys["family"]) || v.Recv != nil && (slices.ContainsFunc(v.Recv.Kids, unix) || unix(v.Recv.Keyword("family")))
}

// wholeNumber is a text as a number, where it is one.
func wholeNumber(t string, at place.Span) *value.Value {
	if n, err := strconv.Atoi(t); err == nil {
		return value.Number(float64(n), at)
	}
	return value.Text(t, at)
}

// endpoint puts into a listener what an endpoint of Twisted says: a port and an
// interface, or both in a text, tcp:8080:interface=127.0.0.1 (Twisted 24, "Getting
// Connected with Endpoints").
func endpoint(l *fact.Listener, made *value.Value) {
	l.Port = value.NotKnown("an endpoint of Twisted", l.At)
	if made == nil {
		return
	}
	if strings.HasSuffix(made.Text, "ServerEndpoint()") {
		if v := made.Keyword("port"); v != nil {
			l.Port = v
		} else if len(made.Kids) > 1 {
			l.Port = made.Kids[1]
		}
		if len(made.Kids) > 3 {
			l.Host = made.Kids[3]
		}
		if v := made.Keyword("interface"); v != nil {
			l.Host = v
		}
		return
	}
	if len(made.Kids) < 2 || made.Kids[1].Kind != value.Str {
		return
	}
	text := made.Kids[1]
	port, host, file, ok := fact.Endpoint(text.Text)
	switch {
	case !ok:
	case file != "":
		l.Port, l.Bind = nil, socketFile(value.Text(file, text.At), text.At)
	default:
		if l.Port = wholeNumber(port, text.At); host != "" {
			l.Host = value.Text(host, text.At)
		}
	}
}

// serverName is what an application of Flask is told to be called: by what the
// program sets while it is gone through, else by what its code sets.
func serverName(e *value.Eval, run *value.Value) *value.Value {
	if app := run.Recv; app != nil && app.Props != nil {
		if config := app.Props.Get("config"); config != nil && config.Props != nil {
			return config.Props.Get("SERVER_NAME")
		}
	}
	return e.Config("SERVER_NAME")
}

// cherryPy puts into a listener what the configuration of CherryPy says: what the
// call is given, what the program set while it was gone through, what its code sets
// (documentation of CherryPy 18, "Configure").
func cherryPy(e *value.Eval, f *code.File, l *fact.Listener, call *value.Value, args []*value.Value, keys map[string]*value.Value) {
	given := keys["config"]
	if len(args) > 2 {
		given = args[2]
	}
	top := call.Recv
	if top != nil && top.Text == "cherrypy.engine" {
		top = top.Recv
	}
	find := func(name string) *value.Value {
		if given != nil {
			if v := given.Get("global").Get("server." + name); v != nil {
				return v
			}
		}
		if top != nil && top.Props != nil {
			for _, from := range []struct{ of, key string }{{"server", name}, {"config", "server." + name}} {
				if o := top.Props.Get(from.of); o != nil && o.Props != nil {
					if v := o.Props.Get(from.key); v != nil && v.Text != "cherrypy."+from.of+"."+from.key {
						return v
					}
				}
			}
			return nil
		}
		for _, site := range f.Sets {
			if site.Node.Is(code.Member) && site.Node.Dotted() == "cherrypy.server."+name {
				return e.Expr(site.Value, site.Scope)
			}
		}
		return e.Config("server." + name)
	}
	l.Port, l.Host = find("socket_port"), find("socket_host")
	for _, site := range f.Calls {
		if site.Node.Kid(0).Dotted() == "cherrypy.server.unsubscribe" {
			l.Port = value.NotKnown("a server of its own in the place of that of CherryPy", f.At(site.Node))
		}
	}
}

// embeddedGunicorn is the listener of a class of the tree that runs gunicorn
// from the program, with its options in what the object is made of or in the
// call that sets them (documentation of gunicorn 23, "Custom Application").
func embeddedGunicorn(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	app := e.Expr(site.Node.Kid(0).Kid(0), site.Scope)
	if app.Kind != value.Instance {
		return nil
	}
	class := *app
	class.Kind = value.Class
	base := e.Base(&class)
	if base == nil || base.Kind != value.External || !strings.HasPrefix(base.Text, "gunicorn.app.") || dead(site.Scope, f, live) {
		return nil
	}
	l := &fact.Listener{Server: "gunicorn", Via: "code", At: f.At(site.Node)}
	for _, v := range app.Given() {
		if bind := v.Get("bind"); bind != nil {
			l.Bind = bind
		}
	}
	for _, x := range f.Calls {
		if fn := x.Node.Kid(0); fn.Is(code.Member) && fn.Name == "set" && fn.Kid(0).Is(code.Member) && fn.Kids[0].Name == "cfg" && x.Node.Kid(1).Is(code.String) && x.Node.Kids[1].Name == "bind" && x.Node.Kid(2) != nil {
			l.Bind = e.Expr(x.Node.Kids[2], x.Scope)
		}
	}
	l.PortAt, l.HostAt = placeOf(l.Bind, l.At), placeOf(l.Bind, l.At)
	return guardedBy(l, e, site)
}

// guardedBy notes the conditions under which a call is come to.
func guardedBy(l *fact.Listener, e *value.Eval, site code.Site) *fact.Listener {
	for _, g := range site.Guards {
		l.Guards, l.Ends = append(l.Guards, e.Guard(g)), append(l.Ends, g.Exit)
	}
	for _, g := range e.Entered(site.Scope) {
		l.Guards, l.Ends = append(l.Guards, g.Test), append(l.Ends, g.Exit)
	}
	return l
}

// exported is the listener of a module that is served by what runs it: Bun, and
// deno serve, take its default export for the server's options (documentation
// of both, 2026-11). nil where the export is none.
func exported(e *value.Eval, f *code.File, final command.Final, process string) *fact.Listener {
	server := ""
	switch {
	case final.Program == "bun":
		server = "bun"
	case final.Program == "deno" && len(final.Free()) > 0 && final.Free()[0].Text == "serve":
		server = "deno serve"
	default:
		return nil
	}
	v := e.Name(f, "default")
	if v == nil {
		return nil
	}
	l := &fact.Listener{Server: server, Via: "code", Process: process, At: placeOf(v, place.Whole(f.Name))}
	if v.Kind == value.Cond && len(v.Kids) == 3 && v.Kids[1].Get("fetch") != nil && v.Kids[2].Get("fetch") != nil { // one of two
		either := func(name string) *value.Value {
			yes, no := v.Kids[1].Get(name), v.Kids[2].Get(name)
			if yes == nil && no == nil {
				return nil
			}
			c := &value.Value{Kind: value.Cond, Kids: []*value.Value{v.Kids[0], yes, no}, Py: v.Py, At: v.At}
			for i, k := range c.Kids {
				if k == nil {
					c.Kids[i] = &value.Value{Kind: value.Undef, At: v.At}
				}
			}
			return c
		}
		l.Port, l.Host = either("port"), either("hostname")
		if server != "bun" {
			l.Port, l.Host = nil, nil
		}
		v = v.Kids[1]
	}
	switch {
	case v.Kind == value.Object && v.Get("fetch") != nil:
		if server == "bun" && l.Port == nil && l.Host == nil {
			l.Port, l.Host = v.Get("port"), v.Get("hostname")
		}
	case v.Kind == value.External && strings.HasSuffix(v.Text, "()"), v.Kind == value.Instance: // an application: new Hono()
		if server == "bun" && strings.HasPrefix(v.Text, "elysia") {
			return nil
		}
	default:
		return nil
	}
	if w, ok, _ := final.Flag("--port"); ok && server == "deno serve" {
		l.Port, l.Via = w.Value, "flag"
	}
	if w, ok, _ := final.Flag("--host"); ok && server == "deno serve" {
		l.Host, l.Via = w.Value, "flag"
	}
	l.PortAt, l.HostAt = placeOf(l.Port, l.At), placeOf(l.Host, l.At)
	return l
}

// boundTo finds config.bind = … for the object that is given to a server.
func boundTo(e *value.Eval, f *code.File, config *code.Node, site code.Site) *value.Value {
	var v *value.Value
	for _, set := range f.Sets {
		if set.Node.Is(code.Member) && set.Node.Name == "bind" && set.Node.Kid(0).Is(code.Name) && config.Is(code.Name) && set.Node.Kids[0].Name == config.Name {
			v = e.Expr(set.Value, set.Scope)
		}
	}
	if made := e.Expr(config, site.Scope); v == nil && made.Kind == value.External && strings.Contains(made.Text, "Config.from_") {
		v = value.NotKnown("the settings that "+made.Text+" reads", made.At)
		if bind := made.Keyword("bind"); bind != nil {
			v = bind
		} else if len(made.Kids) > 0 && made.Kids[0].Get("bind") != nil {
			v = made.Kids[0].Get("bind")
		}
	}
	if v != nil && v.Kind == value.List && len(v.Kids) > 0 {
		return v.Kids[0]
	}
	return v
}

// portLike tells what can be a port from objects, servers and options.
func portLike(v *value.Value) bool {
	switch v.Kind {
	case value.Num, value.Str, value.Env, value.Op, value.Cond:
		return true
	}
	return false
}

func placeOf(v *value.Value, def place.Span) place.Span {
	if v != nil && !v.At.IsZero() && v.At.Line > 0 {
		return v.At
	}
	return def
}

// aliased tells a name under which something is imported or bound, so that
// `from uvicorn import run as serve` is seen.
func aliased(f *code.File, name string) bool {
	if cls := f.Classes[name]; cls != nil {
		for _, b := range cls.Kid(0).Kids {
			if (b.Is(code.Name) || b.Is(code.Member)) && candidates[b.Name] {
				return true
			}
		}
	}
	for _, b := range f.Top.Names[name] {
		if b.Kind == "import" && b.Name2 != nil && b.Name2.Name != name && candidates[b.Name2.Name] {
			return true
		}
	}
	return false
}

// dead tells code in a function that nothing names: it is never called.
func dead(s *code.Scope, f *code.File, live func(string) bool) bool {
	for x := s; x != nil; x = x.Parent {
		if x.Func == nil || x.Class != nil || x.Func.Name == "" || x.Parent == nil || x.Parent.Func != nil {
			continue
		}
		if f.Lang != code.Python && x.Func.Name == "main" || f.Lang == code.Go && x.Func.Name == "init" || x.Func.Name == "constructor" {
			continue
		}
		if len(x.Func.Kids) > 2 { // decorated: the framework calls it
			continue
		}
		if !live(x.Func.Name) {
			return true
		}
	}
	return false
}

// Live tells names that the files of a program use. Files that were only
// skimmed are asked by their bytes: a name that stands there may be a use.
func Live(files []*code.File) func(name string) bool {
	known := map[string]bool{}
	return func(name string) bool {
		if alive, ok := known[name]; ok {
			return alive
		}
		for _, f := range files {
			if uses(f, name) {
				known[name] = true
				return true
			}
		}
		known[name] = false
		return false
	}
}

func uses(f *code.File, name string) bool {
	if f.Skimmed {
		return bytes.Contains(f.Src, []byte(name))
	}
	if f.Names[name] > 0 || f.Used[name] {
		return true
	}
	for _, n := range []string{"default", "="} {
		if b := f.Exports[n]; b != nil && f.Lang != code.Python && b.Func != nil && b.Func.Name == name {
			return true
		}
	}
	return false
}

// ServerListeners gives the listeners of a program that listens by itself:
// from its flags, its variables and its defaults.
func ServerListeners(final command.Final, process string) (listeners []*fact.Listener) {
	known := final.Known
	if known == nil || known.Server == "" {
		return nil
	}
	l := &fact.Listener{Process: process, Server: known.Server, Via: "default", At: final.At, Dev: known.Dev != ""}
	l.PortAt, l.HostAt = final.At, final.At
	flag := func(names ...string) *command.Word {
		w, ok, missing := final.Flag(names...)
		if !ok {
			return nil
		}
		l.Via = "flag"
		if missing {
			l.Missing = true
			return nil
		}
		return &w
	}
	port := func(names ...string) {
		if w := flag(names...); w != nil {
			l.Port, l.PortAt, l.Bare = w.Value, w.At, w.Bare
		}
	}
	host := func(names ...string) {
		if w := flag(names...); w != nil {
			l.Host, l.HostAt = w.Value, w.At
		}
	}
	open := func(names ...string) { // without a value: any interface
		for i, a := range final.Args {
			if slices.Contains(names, a.Text) && (i+1 == len(final.Args) || strings.HasPrefix(final.Args[i+1].Text, "-")) {
				l.Host, l.Missing = value.Text("0.0.0.0", a.At), false
			}
		}
	}
	defer func() {
		for i, a := range final.Args { // words that nobody knows may be flags
			if a.Value == nil || a.Value.Kind != value.Unknown || strings.HasPrefix(a.Text, "-") || i > 0 && strings.HasPrefix(final.Args[i-1].Text, "-") {
				continue
			}
			for _, l := range listeners {
				if l.Via == "default" {
					l.Port, l.Host, l.Bind = a.Value, a.Value, nil
				}
			}
		}
	}()
	var list []*fact.Listener
	switch known.Server {
	case "gunicorn", "hypercorn":
		binds := final.Flags("-b", "--bind")
		for _, w := range binds {
			c := *l
			c.Via = "flag"
			if w.Value == nil {
				c.Missing = true
			} else {
				c.Bind, c.PortAt, c.HostAt, c.Bare = w.Value, w.At, w.At, w.Bare
			}
			list = append(list, &c)
		}
		if len(list) > 0 {
			return list
		}
		if known.Server == "gunicorn" {
			// Arguments may stand in a variable (gunicorn settings,
			// "Configuration Overview").
			for _, a := range final.Env {
				if a.Name != "GUNICORN_CMD_ARGS" || a.Value == nil || a.Value.Kind != value.Str {
					continue
				}
				for _, addr := range fact.GunicornBinds(a.Value.Text) {
					c := *l
					c.Via, c.Bind, c.PortAt, c.HostAt = "flag", value.Text(addr, a.At), a.At, a.At
					list = append(list, &c)
				}
			}
			if len(list) > 0 {
				return list
			}
			// "If the PORT environment variable is defined, the default is
			// ['0.0.0.0:$PORT']. If it is not defined, the default is
			// ['127.0.0.1:8000']." (gunicorn settings, bind)
			v := value.Variable("PORT", value.ReadsUndef, place.Span{})
			isSet := &value.Value{Kind: value.Op, Text: "!==", Kids: []*value.Value{v, {Kind: value.Undef}}}
			addr := value.Concat(value.Text("0.0.0.0:", l.At), v)
			l.Bind = &value.Value{Kind: value.Cond, Kids: []*value.Value{isSet, addr, value.Text("127.0.0.1:8000", l.At)}, At: l.At}
		}
	case "uvicorn":
		host("--host")
		port("--port")
		if w := flag("--uds", "--fd"); w != nil {
			l.Bind = value.Concat(value.Text("unix:", w.At), w.Value)
		}
	case "aiohttp.web":
		host("-H", "--hostname")
		port("-P", "--port")
	case "daphne":
		host("-b", "--bind")
		port("-p", "--port")
		return daphne(final, l)
	case "waitress-serve":
		host("--host")
		port("--port")
		for _, w := range final.Flags("--listen") { // each is a listener of its own
			c := *l
			c.Via, c.Bind, c.PortAt, c.HostAt, c.Bare, c.Missing = "flag", w.Value, w.At, w.At, w.Bare, w.Value == nil
			list = append(list, &c)
		}
		if len(list) > 0 {
			return list
		}
		if w := flag("--unix-socket"); w != nil && w.Value != nil {
			l.Bind, l.PortAt = socketFile(w.Value, w.At), w.At
		}
	case "flask run":
		free := final.Free()
		if len(free) == 0 || free[0].Text != "run" {
			return nil
		}
		host("-h", "--host")
		port("-p", "--port")
	case "fastapi":
		free := final.Free()
		if len(free) == 0 {
			return nil
		}
		l.Server = "fastapi " + free[0].Text
		l.Dev = free[0].Text == "dev"
		host("--host")
		port("--port")
	case "http.server":
		for _, w := range final.Free() {
			l.Port, l.PortAt, l.Via, l.Bare, l.Free = w.Value, w.At, "flag", w.Bare, true
			break
		}
		host("-b", "--bind")
	case "next":
		free := final.Free()
		if len(free) > 0 && free[0].Text != "start" && free[0].Text != "dev" {
			return nil
		}
		l.Dev = len(free) == 0 || free[0].Text == "dev"
		host("-H", "--hostname")
		port("-p", "--port")
	case "vite":
		if free := final.Free(); len(free) > 0 {
			switch free[0].Text {
			case "build", "optimize":
				return nil
			case "preview":
				l.Server = "vite preview"
			}
		}
		host("--host")
		port("--port")
		open("--host")
	case "php -S":
		if free := final.Free(); len(free) > 1 && free[0].Text == "artisan" && free[1].Text == "serve" {
			l.Server, l.Dev = "artisan serve", true
			port("--port")
			host("--host")
			return []*fact.Listener{l}
		}
		w := flag("-S", "--server")
		if w == nil && !l.Missing {
			return nil // a script, not the server
		}
		if w != nil {
			l.Bind, l.PortAt, l.HostAt, l.Bare = w.Value, w.At, w.At, w.Bare
		}
		l.Dev = true
	case "rails":
		free := final.Free()
		if len(free) == 0 || free[0].Text != "server" && free[0].Text != "s" {
			return nil
		}
		port("-p", "--port")
		host("-b", "--binding")
		if w, ok, _ := final.Flag("-e", "--environment"); ok {
			l.Mode = w.Value
		}
	case "unicorn":
		port("-p", "--port")
		host("-o", "--host")
		for _, w := range final.Flags("-l", "--listen") {
			c := *l
			c.Via, c.Bind, c.PortAt, c.HostAt = "flag", w.Value, w.At, w.At
			list = append(list, &c)
		}
		if len(list) > 0 {
			return list
		}
	case "thin":
		port("-p", "--port")
		host("-a", "--address")
		if w := flag("-S", "--socket"); w != nil && w.Value != nil {
			if l.Bind, l.PortAt = socketFile(w.Value, w.At), w.At; w.Literal() && !strings.Contains(w.Text, "/") { // it is taken for a host
				l.Bind, l.Host = nil, w.Value
			}
		}
	case "falcon":
		port("-p", "--port")
		if w := flag("-b", "--bind"); w != nil {
			l.Bind, l.PortAt, l.HostAt = w.Value, w.At, w.At
		}
	case "puma":
		// Each -b is a listener of its own; -p adds one.
		for _, w := range final.Flags("-b", "--bind") {
			c := *l
			c.Via, c.Bind, c.PortAt, c.HostAt, c.Bare = "flag", w.Value, w.At, w.At, w.Bare
			list = append(list, &c)
		}
		port("-p", "--port")
		if len(list) > 0 && l.Port == nil && !l.Missing {
			return list
		}
		return append(list, l)
	case "uwsgi":
		for _, name := range []string{"--http", "--http-socket", "--socket", "-s", "--https", "--shared-socket"} {
			for _, w := range final.Flags(name) {
				c := *l
				c.Via = "flag"
				if w.Value == nil {
					c.Missing = true
				} else {
					c.Bind, c.PortAt, c.HostAt, c.Bare = w.Value, w.At, w.At, w.Bare
				}
				list = append(list, &c)
			}
		}
		return list
	case "jwebserver":
		port("-p", "--port")
		host("-b", "--bind-address")
	case "rackup":
		port("-p", "--port")
		host("-o", "--host")
		if w, ok, _ := final.Flag("-E", "--env"); ok {
			l.Mode = w.Value
		}
	case "serve":
		port("-l", "--listen", "-p", "--port")
		// An address: tcp://host:port, unix:path (documentation of serve 14, --listen).
		head := l.Port
		if head != nil && head.Kind == value.Op && head.Text == "concat" && len(head.Kids) > 0 {
			head = head.Kids[0]
		}
		if head != nil && head.Kind == value.Str && strings.HasPrefix(head.Text, "tcp:") && !strings.HasPrefix(head.Text, "tcp://") {
			full := *head
			full.Text = "tcp://" + strings.TrimPrefix(head.Text, "tcp:")
			if whole := *l.Port; whole.Kind == value.Op {
				whole.Kids = append([]*value.Value{&full}, whole.Kids[1:]...)
				l.Port = &whole
			} else {
				l.Port = &full
			}
			head = &full
		}
		if head != nil && head.Kind == value.Str && (strings.HasPrefix(head.Text, "tcp://") || strings.HasPrefix(head.Text, "unix:")) {
			l.Bind, l.Port = l.Port, nil
		}
	case "sirv":
		host("-H", "--host")
		port("-p", "--port")
		open("-H", "--host")
	case "http-server":
		host("-a")
		port("-p", "--port")
		if l.Port != nil && l.Port.Kind == value.Str && l.Port.Text == "0" { // as if it were not given
			l.Port = value.Text("8080", l.PortAt)
		}
	case "json-server":
		host("-H", "--host")
		port("-p", "--port")
	case "astro preview":
		free := final.Free()
		if len(free) == 0 || free[0].Text != "preview" && free[0].Text != "dev" {
			return nil
		}
		l.Dev = free[0].Text == "dev"
		host("--host")
		port("--port")
		open("--host")
	case "fastify-cli":
		host("-a", "--address")
		port("-p", "--port")
	case "streamlit":
		host("--server.address")
		port("--server.port")
	}
	return []*fact.Listener{l}
}

// daphne gives the listeners of daphne: of a port or an interface, of a socket that is a
// file, and of each endpoint; of its own port where there is none of them (daphne 4.0,
// daphne/cli.py, run).
func daphne(final command.Final, l *fact.Listener) (list []*fact.Listener) {
	for _, w := range final.Flags("-e", "--endpoint") {
		c := *l
		c.Via, c.Port, c.Host, c.PortAt, c.HostAt = "flag", nil, nil, w.At, w.At
		c.Bind = w.Value
		list = append(list, &c)
	}
	if w, ok, missing := final.Flag("-u", "--unix-socket"); ok && !missing {
		c := *l
		c.Via, c.Port, c.Host, c.Bind, c.PortAt, c.HostAt = "flag", nil, nil, socketFile(w.Value, w.At), w.At, w.At
		list = append(list, &c)
	}
	if _, ok, _ := final.Flag("--fd"); ok {
		c := *l
		c.Via, c.Port, c.Host, c.Bind = "flag", nil, nil, value.NotKnown("a socket that is handed over", final.At)
		list = append(list, &c)
	}
	if len(list) == 0 || l.Port != nil || l.Host != nil || l.Missing {
		list = append([]*fact.Listener{l}, list...)
	}
	return list
}

// Number gives a literal port.
func Number(s string) (int, bool) {
	n, err := strconv.Atoi(s)
	return n, err == nil
}

// Inner gives the listeners that the code of a start opens while a server of
// its own imports it: calls outside of functions.
func Inner(st *fact.Start) []*fact.Listener {
	var list []*fact.Listener
	read := st.Program.Loader.File
	if p, ok := st.Program.Loader.(*Program); ok {
		read = p.Skim // what cannot listen is not read for this
	}
	for _, name := range st.Reached {
		f := read(name)
		if f == nil || f.Skimmed {
			continue
		}
		for _, site := range f.Calls {
			if site.Scope != f.Top {
				continue
			}
			if l := listener(st.Program, f, site, func(string) bool { return true }); l != nil {
				l.Process = st.Process
				list = append(list, l)
			}
		}
	}
	return list
}
