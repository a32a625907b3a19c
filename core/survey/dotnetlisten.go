package survey

import (
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// Where an ASP.NET Core application listens (ASP.NET Core 10, "Configure
// endpoints for the Kestrel web server"; source of GenericWebHostService and
// AddressBinder; read 2026-11). The first of these that is there counts:
// endpoints of Kestrel in code, those in the settings, addresses that the
// application adds or runs with, UseUrls, --urls, the variables ASPNETCORE_URLS
// and DOTNET_URLS, the setting Urls, the variables ASPNETCORE_HTTP_PORTS and
// DOTNET_HTTP_PORTS, port 5000 of loopback.

// kestrelCalls are the methods of KestrelServerOptions that listen: the place
// of a port and of an interface, -1 where it says itself.
var kestrelCalls = map[string]struct {
	port, host int
	on         string
}{
	"Listen": {1, 0, ""}, "ListenAnyIP": {0, -1, "0.0.0.0"}, "ListenLocalhost": {0, -1, "127.0.0.1"},
}

// dotnetListeners finds where a program of .NET listens.
func dotnetListeners(e *value.Eval, files []*code.File, st *fact.Start, live func(string) bool) (all []*fact.Listener) {
	var list, kestrel, urls, use []*fact.Listener
	var web *place.Span
	add := func(to *[]*fact.Listener, f *code.File, site code.Site, l fact.Listener) {
		l.At, l.Via, l.Process = f.At(site.Node), "code", st.Process
		l.PortAt, l.HostAt = placeOf(l.Port, placeOf(l.Bind, l.At)), placeOf(l.Host, placeOf(l.Bind, l.At))
		guardedBy(&l, e, site)
		*to = append(*to, &l)
	}
	for _, f := range files {
		if f.Lang != code.CSharp || f.Skimmed {
			continue
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			path := callee.Dotted()
			last := value.Tail(path, 1)
			if callee.Is(code.Member) {
				last = callee.Name
			}
			if dead(site.Scope, f, func(n string) bool {
				return n == "Main" || strings.HasPrefix(n, "Configure") || n == "CreateHostBuilder" || live(n)
			}) {
				continue
			}
			args, _ := e.Arguments(site)
			switch {
			case site.Node.Is(code.New) && last == "TcpListener" && len(args) == 2:
				add(&list, f, site, fact.Listener{Server: "dotnet", Host: args[0], Port: args[1]})
			case site.Node.Is(code.New) && last == "TcpListener" && len(args) == 1 && args[0].Kind == value.List && len(args[0].Kids) == 2:
				add(&list, f, site, fact.Listener{Server: "dotnet", Host: args[0].Kids[0], Port: args[0].Kids[1]})
			case path == "TcpListener.Create" && len(args) == 1:
				add(&list, f, site, fact.Listener{Server: "dotnet", Port: args[0]})
			case last == "Add" && strings.HasSuffix(path, "Prefixes.Add") && len(args) == 1:
				add(&list, f, site, fact.Listener{Server: "kestrel", Bind: args[0]})
			case path == "WebApplication.CreateBuilder", path == "WebApplication.Create", path == "WebApplication.CreateSlimBuilder", path == "WebApplication.CreateEmptyBuilder", last == "ConfigureWebHostDefaults", path == "WebHost.CreateDefaultBuilder", last == "ConfigureWebHost":
				at := f.At(site.Node)
				web = &at
			case site.Node.Is(code.New) && last == "WebHostBuilder":
				at := f.At(site.Node)
				web = &at
			case last == "UseUrls" && len(args) > 0:
				add(&use, f, site, fact.Listener{Server: "kestrel", Bind: args[0]})
			case last == "UseSetting" && len(args) == 2 && args[0].Kind == value.Str && strings.EqualFold(args[0].Text, "urls"):
				add(&use, f, site, fact.Listener{Server: "kestrel", Bind: args[1]})
			case (last == "Run" || last == "RunAsync") && len(args) == 1 && chainHead(e, callee.Kid(0), site.Scope, 0) != "" && strings.HasPrefix(chainHead(e, callee.Kid(0), site.Scope, 0), "WebApplication."):
				add(&urls, f, site, fact.Listener{Server: "kestrel", Bind: args[0]})
			case last == "Add" && strings.HasSuffix(path, ".Urls.Add") && len(args) == 1:
				add(&urls, f, site, fact.Listener{Server: "kestrel", Bind: args[0]})
			case kestrelCalls[last].on != "" || last == "Listen":
				k := kestrelCalls[last]
				if site.Scope.Func == nil || site.Scope.Func.Name != "" || !callee.Is(code.Member) || len(args) == 0 {
					continue // not in what Kestrel is configured with
				}
				l := fact.Listener{Server: "dotnet", Port: args[min(k.port, len(args)-1)]}
				switch {
				case k.on != "":
					l.Host = value.Text(k.on, f.At(site.Node))
				case args[0].Kind == value.List && len(args[0].Kids) == 2:
					l.Host, l.Port = args[0].Kids[0], args[0].Kids[1]
				case len(args) > 1:
					l.Host = args[0]
				default:
					continue
				}
				add(&kestrel, f, site, l)
			}
		}
	}
	if web == nil {
		return list
	}
	if len(kestrel) > 0 {
		return append(list, plain(kestrel)...)
	}
	if l := kestrelSettings(e, st, *web); l != nil {
		return append(list, l)
	}
	var over *fact.Listener // an address that is added only sometimes
	for _, l := range [][]*fact.Listener{urls, use} {
		if len(l) == 1 && len(l[0].Guards) == 1 && !l[0].Ends[0] {
			over = l[0]
		} else if len(l) > 0 {
			return append(list, plain(l)...)
		}
	}
	at := *web
	defer func() {
		if over != nil {
			last := all[len(all)-1]
			other := last.Bind
			if other == nil {
				other = value.Text("http://localhost:5000", last.At)
			}
			over.Bind = &value.Value{Kind: value.Cond, Py: true, At: over.At, Kids: []*value.Value{over.Guards[0], over.Bind, other}}
			over.Guards, over.Ends = nil, nil
			all[len(all)-1] = over
		}
	}()
	l := &fact.Listener{Process: st.Process, Server: "kestrel", Via: "default", At: at, PortAt: at, HostAt: at}
	if flag := st.Final.Flags("--urls"); len(flag) > 0 && flag[0].Value != nil {
		l.Bind, l.Via, l.PortAt, l.HostAt = flag[0].Value, "flag", flag[0].At, flag[0].At
		return append(list, l)
	}
	l.Server = "kestrel default"
	if urls := value.Setting(e, "Urls", at); len(urls.Kids) != 2 { // an argument of the program
		l.Bind, l.Via, l.PortAt, l.HostAt = urls, "flag", placeOf(urls, at), placeOf(urls, at)
	} else if urls.Kids[1].Kind != value.Undef {
		l.Bind, l.Via = urls.Kids[1], "setting"
		l.At = placeOf(urls.Kids[1], at)
		l.PortAt, l.HostAt = l.At, l.At
	}
	if st.Descriptor != nil && st.Descriptor.Image != nil {
		l.Bind, l.Port = imageURLs(st.Descriptor.Image, l.Bind)
	}
	return append(list, l)
}

// plain leaves out what listens with a certificate where something listens
// without one.
func plain(list []*fact.Listener) []*fact.Listener {
	var kept []*fact.Listener
	for _, l := range list {
		if l.Bind == nil || l.Bind.Kind != value.Str || !strings.HasPrefix(l.Bind.Text, "https:") {
			kept = append(kept, l)
		}
	}
	if kept == nil {
		return list
	}
	return kept
}

// kestrelSettings finds endpoints in the settings: Kestrel:Endpoints:NAME:Url.
func kestrelSettings(e *value.Eval, st *fact.Start, at place.Span) *fact.Listener {
	for _, file := range []string{"appsettings.Production.json", "appsettings.json"} {
		d := e.Loader.Data(Join(st.Final.Dir, file))
		for _, k := range d.Get("Kestrel", "Endpoints").Items() {
			if url := k.Get("Url"); url != nil && !strings.HasPrefix(url.Str(), "https:") {
				v := value.Setting(e, "Kestrel:Endpoints:"+k.Key+":Url", at)
				return &fact.Listener{Process: st.Process, Server: "kestrel", Via: "setting", At: url.At(), PortAt: url.At(), HostAt: url.At(), Bind: v}
			}
		}
	}
	return nil
}

// imageURLs adds what the runtime images of .NET set: since version 8 the
// variable ASPNETCORE_HTTP_PORTS, before that ASPNETCORE_URLS (.NET
// documentation, "ASP.NET Core apps use port 8080 by default in container
// images").
func imageURLs(image *fact.Image, bind *value.Value) (urls, port *value.Value) {
	for _, b := range image.Bases {
		if !b.Final || !strings.Contains(b.Name, "dotnet/") || bind != nil {
			continue
		}
		version, _, _ := strings.Cut(b.Tag, "-")
		major, _, _ := strings.Cut(version, ".")
		if n, err := strconv.Atoi(major); err == nil && n < 8 {
			return value.Text("http://+:80", b.At), nil
		}
		return value.Text("http://+:8080", b.At), nil
	}
	return bind, nil
}
