package survey

import (
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// elixirListeners finds where a program of Elixir listens: children of a
// supervisor that are Bandit or Plug.Cowboy, calls that start them, sockets of
// Erlang, the endpoint of Phoenix in the files of config/. Sources: Bandit 1.8,
// Plug.Cowboy 2.7, Phoenix 1.8 ("Phoenix.Endpoint", "Deploying with releases"),
// Erlang/OTP 28 gen_tcp, Cowboy 2.14; read 2026-11.
func elixirListeners(e *value.Eval, files []*code.File, st *fact.Start) []*fact.Listener {
	var list []*fact.Listener
	add := func(f *code.File, n *code.Node, guards []code.Guard, l fact.Listener) {
		l.At, l.Via, l.Process = f.At(n), "code", st.Process
		l.PortAt, l.HostAt = placeOf(l.Port, l.At), placeOf(l.Host, l.At)
		guardedBy(&l, e, code.Site{Guards: guards})
		list = append(list, &l)
	}
	from := func(opts *value.Value, server string) fact.Listener {
		l := fact.Listener{Server: server, Port: opts.Get("port"), Host: value.ElixirIP(opts.Get("ip"))}
		if opts != nil && opts.Kind != value.Object && opts.Kind != value.Undef && opts.Kind != value.List {
			l.Port = value.NotKnown("options that are made while the program runs", opts.At)
		}
		return l
	}
	endpoint := ""
	for _, f := range files {
		if f.Lang != code.Elixir || f.Skimmed || strings.Contains("/"+f.Name, "/config/") {
			continue
		}
		for _, child := range children(f) { // {Bandit, plug: X, port: 4000}
			opts := e.Expr(child.node, child.scope)
			switch child.node.Kids[0].Dotted() {
			case "Bandit":
				if s := opts.Get("scheme"); s == nil || s.Text != "https" {
					add(f, child.node, child.guards, from(opts, "bandit"))
				}
			case "Plug.Cowboy":
				o := opts.Get("options")
				if o == nil {
					o = &value.Value{Kind: value.Object}
				}
				if s := opts.Get("scheme"); s == nil || s.Text != "https" {
					add(f, child.node, child.guards, from(o, "bandit"))
				}
			}
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			path := callee.Dotted()
			if callee.Is(code.Member) && callee.Kid(0).Is(code.String) { // :gen_tcp.listen
				path = callee.Kids[0].Name + "." + callee.Name
			}
			args, keys := e.Arguments(site)
			opts := &value.Value{Kind: value.Object}
			for k, v := range keys {
				opts.Keys, opts.Kids = append(opts.Keys, k), append(opts.Kids, v)
			}
			if len(keys) == 0 && len(args) > 0 {
				opts = args[len(args)-1]
			}
			switch path {
			case "Bandit.start_link", "Plug.Cowboy.http":
				add(f, site.Node, site.Guards, from(opts, "bandit"))
			case "cowboy.start_clear", "ranch.start_listener":
				if len(args) > 1 {
					o := args[1]
					if so := o.Get("socket_opts"); so != nil {
						o = so
					}
					add(f, site.Node, site.Guards, from(o, "gen_tcp"))
				}
			case "gen_tcp.listen":
				if len(args) > 0 {
					l := fact.Listener{Server: "gen_tcp", Port: args[0]}
					if ip := opts.Get("ip"); ip != nil {
						l.Host = value.ElixirIP(ip)
					} else if len(args) > 1 {
						for _, k := range args[1].Kids {
							if k.Kind == value.List && len(k.Kids) == 2 && k.Kids[0].Kind == value.Str && k.Kids[0].Text == "ip" {
								l.Host = value.ElixirIP(k.Kids[1])
							}
							if ip := k.Get("ip"); ip != nil {
								l.Host = value.ElixirIP(ip)
							}
						}
					}
					add(f, site.Node, site.Guards, l)
				}
			}
		}
		for name := range f.Classes {
			if strings.HasSuffix(name, ".Endpoint") {
				endpoint = name
			}
		}
	}
	if len(list) == 0 {
		if l := phoenix(e, st, endpoint); l != nil {
			list = append(list, l)
		}
	}
	return list
}

// child is a place of a supervisor's list: {Module, option: value}.
type child struct {
	node   *code.Node
	scope  *code.Scope
	guards []code.Guard
}

// children finds what stands in braces with a module first.
func children(f *code.File) []child {
	var list []child
	seen := map[*code.Node]bool{}
	look := func(n *code.Node, s *code.Scope, guards []code.Guard) {
		n.Walk(func(k *code.Node) bool {
			if k.Is(code.Object) && len(k.Kids) > 1 && !seen[k] {
				switch k.Kids[0].Dotted() {
				case "Bandit", "Plug.Cowboy":
					seen[k] = true
					list = append(list, child{k, s, guards})
				}
			}
			return true
		})
	}
	for fn, s := range f.Funcs {
		if fn.Name == "start" || fn.Name == "init" || fn.Name == "children" {
			look(fn.Kid(1), s, nil)
		}
	}
	for _, site := range f.Calls { // in a script
		if site.Scope.Func == nil {
			look(site.Node, site.Scope, site.Guards)
		}
	}
	return list
}

// phoenix finds where the endpoint of Phoenix listens: the settings of its
// http; it serves under mix phx.server, or where server is set.
func phoenix(e *value.Eval, st *fact.Start, endpoint string) *fact.Listener {
	var port, ip, server *value.Value
	var at *place.Span
	for _, c := range e.Configs() {
		for _, site := range c.File.Calls {
			fn := site.Node.Kid(0)
			if !fn.Is(code.Name) || fn.Name != "config" || !strings.HasSuffix(site.Node.Kid(2).Dotted(), "Endpoint") {
				continue
			}
			if at == nil {
				s := c.File.At(site.Node)
				at = &s
			}
			for _, a := range site.Node.Args() {
				if !a.Is(code.Keyword) {
					continue
				}
				v := e.Expr(a.Kid(0), site.Scope)
				switch a.Name {
				case "http":
					if p := v.Get("port"); p != nil {
						port = c.Put(e, site, p, port)
					}
					if i := v.Get("ip"); i != nil {
						ip = c.Put(e, site, value.ElixirIP(i), ip)
					}
				case "server":
					server = c.Put(e, site, v, server)
				}
			}
		}
	}
	if at == nil || endpoint == "" && port == nil {
		return nil
	}
	l := &fact.Listener{Process: st.Process, Server: "phoenix", Via: "setting", At: *at, Port: port, Host: ip}
	l.PortAt, l.HostAt = placeOf(port, *at), placeOf(ip, *at)
	l.At = l.PortAt
	if !strings.Contains(st.Command, "phx.server") {
		if server == nil {
			server = &value.Value{Kind: value.Null, At: *at}
		}
		l.Guards, l.Ends = append(l.Guards, server), append(l.Ends, false)
	}
	return l
}
