package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/value"
)

type goServer struct {
	server string
	addr   int
}

// goFiles are the methods and functions among them whose address is the path of a socket.
var goFiles = map[string]bool{"RunUnix": true, "ListenAndServeUNIX": true}

// goServers say which functions of Go listen: what makes the object, a space,
// and the method; or the function alone. The number is the place of the
// address, -1 for none. Source: the documentation of each package, 2026-11.
var goServers = map[string]goServer{
	"net/http.ListenAndServe": {"go", 0}, "net/http.ListenAndServeTLS": {"go", 0}, "net.Listen": {"go", 1}, "net.ListenTCP": {"go", 1},
	"github.com/valyala/fasthttp.ListenAndServe": {"go", 0}, "github.com/valyala/fasthttp.Server() ListenAndServe": {"go", 0},
	"github.com/valyala/fasthttp.Server() ListenAndServeTLS": {"go", 0}, "github.com/valyala/fasthttp.Server() ListenAndServeTLSEmbed": {"go", 0}, "github.com/valyala/fasthttp.Server() ListenAndServeUNIX": {"go", 0},
	"github.com/valyala/fasthttp.ListenAndServeTLS": {"go", 0}, "github.com/valyala/fasthttp.ListenAndServeTLSEmbed": {"go", 0}, "github.com/valyala/fasthttp.ListenAndServeUNIX": {"go", 0},
	"github.com/gin-gonic/gin.Default() RunTLS": {"gin", 0}, "github.com/gin-gonic/gin.New() RunTLS": {"gin", 0},
	"github.com/gin-gonic/gin.Default() RunUnix": {"go", 0}, "github.com/gin-gonic/gin.New() RunUnix": {"go", 0},
	"github.com/gofiber/fiber.New() ListenTLS": {"go", 0},
	"github.com/gin-gonic/gin.Default() Run":   {"gin", 0}, "github.com/gin-gonic/gin.New() Run": {"gin", 0},
	"github.com/labstack/echo.New() Start": {"go", 0}, "github.com/labstack/echo.New() StartTLS": {"go", 0}, "github.com/labstack/echo.New() StartAutoTLS": {"go", 0},
	"github.com/labstack/echo.New() StartServer": {"go", 0}, "github.com/labstack/echo.New() StartH2CServer": {"go", 0},
	"github.com/gofiber/fiber.New() Listen":                    {"go", 0},
	"github.com/julienschmidt/httprouter.New() ListenAndServe": {"go", 0}, "github.com/kataras/iris.New() Listen": {"go", 0}, "github.com/kataras/iris.Default() Listen": {"go", 0}, "github.com/go-martini/martini.Classic() RunOnAddr": {"go", 0}, "github.com/gobuffalo/buffalo.New() Serve": {"go", -1},
}

// goMethods are the names of all of these, and of http.Server's own.
var goMethods = map[string]bool{"ListenAndServe": true, "ListenAndServeTLS": true, "Listen": true, "ListenTCP": true, "Run": true, "Start": true, "StartTLS": true, "StartAutoTLS": true, "StartServer": true, "StartH2CServer": true, "RunOnAddr": true, "RunTLS": true,
	"ListenAndServeTLSEmbed": true, "ListenAndServeUNIX": true, "ListenTLS": true, "RunUnix": true}

// setsAddress reports whether some line of the program sets the address of a
// server that was not found to be this one.
func setsAddress(e *value.Eval) bool {
	for _, f := range e.Loader.Loaded() {
		for _, s := range f.Sets {
			if f.Lang == code.Go && s.Node.Is(code.Member) && s.Node.Name == "Addr" {
				return true
			}
		}
	}
	return false
}

// tcpAddress is the address of a net.TCPAddr, or of what net.ResolveTCPAddr
// gives; nil for any other.
func tcpAddress(args []*value.Value) *value.Value {
	if len(args) != 2 {
		return nil
	}
	a := args[1]
	if a.Kind == value.External && a.Text == "net.ResolveTCPAddr()" && len(a.Kids) == 2 {
		return a.Kids[1]
	}
	if a.Kind == value.Instance && len(a.Keys) > 0 { // the program was gone through
		of := *a
		of.Kind = value.Object
		a = &of
	}
	if a.Kind != value.Object {
		return nil
	}
	host, port := value.Text("", a.At), a.Get("Port")
	if port == nil {
		port = value.Text("0", a.At)
	}
	if ip := a.Get("IP"); ip != nil {
		switch {
		case ip.Kind == value.Null:
		case ip.Kind == value.Str && strings.Contains(ip.Text, ":"):
			host = value.Text("["+ip.Text+"]", ip.At)
		case ip.Kind == value.Str:
			host = ip
		case ip.Kind == value.External && ip.Text == "net.ParseIP()" && len(ip.Kids) == 1:
			host = ip.Kids[0]
		case ip.Kind == value.External && ip.Text == "net.IPv4()" && len(ip.Kids) == 4:
			dot := value.Text(".", ip.At)
			host = value.Concat(ip.Kids[0], dot, ip.Kids[1], dot, ip.Kids[2], dot, ip.Kids[3])
		case ip.Text == "net.IPv4zero" || ip.Text == "net.IPv6zero" || ip.Text == "net.IPv6unspecified":
		case ip.Text == "net.IPv6loopback":
			host = value.Text("[::1]", ip.At)
		default:
			return nil
		}
	}
	return value.Concat(host, value.Text(":", a.At), port)
}

// goListener finds a call that listens in Go.
func goListener(e *value.Eval, f *code.File, site code.Site, live func(string) bool) *fact.Listener {
	callee := site.Node.Kid(0)
	if !callee.Is(code.Member) || !goMethods[callee.Name] || dead(site.Scope, f, live) {
		return nil
	}
	args, _ := e.Arguments(site)
	recv := e.Expr(callee.Kid(0), site.Scope)
	if recv.Kind == value.Object && e.Callee(site).Kind == value.Func { // a method of the tree
		return nil
	}
	if l := goFilled(e, f, site.Node, callee.Name, recv, args); l != nil {
		return guardedBy(l, e, site)
	}
	return nil
}

// goFilled is the listener that a call of Go makes of its object and what it is
// given; nil where it listens nowhere.
func goFilled(e *value.Eval, f *code.File, n *code.Node, name string, recv *value.Value, args []*value.Value) *fact.Listener {
	what := f.Text(n.Kid(0).Kid(0))
	l := &fact.Listener{Server: "go", Via: "code", At: f.At(n)}
	server := name == "ListenAndServe" || name == "ListenAndServeTLS"
	given := goServers[recv.Text+"() "+name]
	switch {
	case recv.Kind == value.External:
		path := recv.Text + "." + name
		s, ok := goServers[path]
		if !ok {
			if s, ok = goServers[recv.Text+" "+name]; !ok {
				return nil
			}
		}
		if path == "net.Listen" && len(args) > 1 && args[0].Kind == value.Str && args[0].Text == "unix" {
			l.Server, l.Bind = s.server, value.Concat(value.Text("unix:", l.At), args[1])
			break
		}
		if path == "net.Listen" && (len(args) < 2 || args[0].Kind != value.Str || len(args[0].Text) < 3 || args[0].Text[:3] != "tcp") {
			return nil
		}
		l.Server = s.server
		if path == "net.ListenTCP" {
			if l.Bind = tcpAddress(args); l.Bind == nil {
				l.Bind = value.NotKnown("the address that ListenTCP is given", l.At)
			}
			break
		}
		if s.addr >= 0 && s.addr < len(args) {
			if l.Bind = args[s.addr]; goFiles[name] {
				l.Bind = socketFile(args[s.addr], l.At)
			}
			if server := l.Bind; server.Kind == value.Object && strings.HasSuffix(server.Text, "http.Server") { // one that is handed over
				if l.Bind = server.Get("Addr"); l.Bind == nil {
					l.Bind = value.Text("", l.At)
				}
			}
		}
	case recv.Kind == value.Object && recv.Text == "net.ListenConfig" && name == "Listen" && len(args) == 3:
		l.Bind = args[2]
	case recv.Kind == value.Object && given.server != "": // an object that is written out, and is given its address
		if len(args) <= given.addr {
			return nil
		}
		if l.Bind = args[given.addr]; goFiles[name] {
			l.Bind = socketFile(args[given.addr], l.At)
		}
	case recv.Kind == value.Object && server:
		for _, k := range recv.Kids { // a server that is embedded
			if recv.Get("Addr") == nil && k.Kind == value.Object && strings.HasSuffix(k.Text, "http.Server") {
				recv = k
				break
			}
		}
		if l.Bind = recv.Get("Addr"); l.Bind == nil {
			l.Bind = value.Text("", l.At)
			if !strings.HasSuffix(recv.Text, "http.Server") || setsAddress(e) {
				l.Bind = value.NotKnown("where "+what+" gets its address is not followed", l.At)
			}
		}
	case server:
		l.Bind = value.NotKnown("where "+what+" gets its address is not followed", l.At)
	default:
		return nil
	}
	l.PortAt = placeOf(l.Bind, l.At)
	l.HostAt = l.PortAt
	return l
}

// goNoted says of what a program of Go calls whether it listens, and whether the
// program stays in it.
func goNoted(v *value.Value) (note, stays bool) {
	recv, name := goCallee(v)
	if !goMethods[name] {
		return false, false
	}
	_, plain := goServers[v.Text]
	_, made := goServers[recv.Text+" "+name]
	own := recv.Kind == value.Object && (strings.HasSuffix(recv.Text, "http.Server") || strings.HasSuffix(recv.Text, "fasthttp.Server") || recv.Text == "net.ListenConfig")
	note = plain || made || own
	return note, note && !strings.HasPrefix(v.Text, "net.Listen")
}

// goCallee is the object that is called, and the name of the method.
func goCallee(v *value.Value) (recv *value.Value, name string) {
	i := strings.LastIndexByte(v.Text, '.')
	if i < 0 {
		return &value.Value{}, v.Text
	}
	recv = &value.Value{Kind: value.External, Text: v.Text[:i]}
	if v.Recv != nil && v.Recv.Kind == value.Object {
		recv = v.Recv
	}
	return recv, v.Text[i+1:]
}
