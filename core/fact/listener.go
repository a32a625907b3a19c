package fact

import (
	"math"
	"net/netip"
	"slices"
	"strconv"
	"strings"

	"ubique/core/place"
	"ubique/core/value"
)

// Listener is where a component listens: the interface and the port, each a
// value, and what the server does with them.
type Listener struct {
	Process            string
	Server             string       // a key of Servers
	Host               *value.Value // nil: the server's default
	Port               *value.Value // nil: the server's default
	Bind               *value.Value // an address of both, instead
	Missing            bool         // a flag without its value: the program exits
	Via                string       // code, flag, setting, default
	At                 place.Span   // the listening call or the flag
	PortAt             place.Span
	HostAt             place.Span
	Guards             []*value.Value // all must hold for it to listen
	Ends               []bool         // for each: the program ends where it does not hold
	Dev                bool           // a development server
	Bare               bool           // the port is an unquoted word of a shell
	Free               bool           // it is an argument of its own, not the value of a flag
	Shared             bool           // it stands where only something that failed may lead, or in a function without a name
	FlagPort, FlagHost bool           // it comes from the command line, which no variable beats
	Mode               *value.Value   // what the program says it is run for; nil: the environment says it
	View               View           // what is left of it for reports
	Met                bool           // it was found by going through the program
	// Asked are the variables that a program asks for while it is gone through; nil:
	// its values tell.
	Asked func() []*value.Value
	// Named is the address that an application has of its own, host:port, which stands
	// in for what the call does not give; nil: none.
	Named *value.Value
	// Spare is the port that the command line gives where neither the code nor a
	// variable does; nil: none.
	Spare *value.Value
	// Socket is the path of a socket, which beats the port where it is set; nil: none.
	Socket *value.Value
	// Ended says why the shell ends before the program starts, in the environment that
	// was asked for; empty where it does not.
	Ended string
	// Caught says that the command runs another program where this one fails.
	Caught bool
	// Doubt is what could not be told of what surrounds it and decides where it listens;
	// empty for nothing.
	Doubt string
	// Net reports whether the runtime keeps it from listening there; nil: from nowhere.
	Net func(Outcome) bool
	// Commanded is what the command makes of other variables and puts into the
	// environment, for the server to read by itself.
	Commanded []Assigned
	// Follow says what it does in an environment by going through the program, for
	// what its values do not tell; ok is false where that does not tell it either.
	// Nil: there is no such way.
	Follow func(value.Environ) (out Outcome, ok bool)
}

// Assigned is a variable that a command sets, or takes out where it has no value: all of
// them where it has no name.
type Assigned struct {
	Name  string
	Value *value.Value
}

// commanded puts into an environment what the command sets in it.
func (l *Listener) commanded(env value.Environ) value.Environ {
	if len(l.Commanded) == 0 {
		return env
	}
	more, given := map[string]string{}, env // words are made before anything is taken out
	for _, s := range l.Commanded {
		if s.Value == nil { // it is taken out
			env = env.Without(s.Name)
			continue
		}
		switch o := s.Value.Under(given); o.Kind {
		case value.Str:
			more[s.Name] = o.Text
		case value.Num:
			more[s.Name] = strconv.FormatFloat(o.Num, 'f', -1, 64)
		}
	}
	return env.With(more)
}

// View is a listener as reports show it.
type View struct {
	Interface    string // any, loopback, an address, unix:PATH, unknown
	PortKind     string // number, variable, unknown
	Number       int
	Variable     string
	Fallback     string
	Under        *Outcome // with an environment that was asked for
	InterfaceVar string
}

// Look makes the view: what the listener does by itself, and which variable
// decides its port. Doubted asks for going through the program besides, where its values
// tell.
func (l *Listener) Look(env value.Environ, with *value.Environ, doubted bool) {
	seen, out := l, l.Under(env)
	if other, ok := l.doubts(env, out, doubted); ok { // its values tell another story than the program
		why := value.NotKnown("a value that is made while the program runs", l.At)
		there := *l
		there.Bind, there.Named, there.Port, there.Host, there.Guards, there.Ends = nil, nil, why, why, nil, nil
		seen, out = &there, other
	}
	if out.Outcome == "skipped" { // where it would listen is said all the same
		there := *l
		there.Guards, there.Ends = nil, nil
		out = there.Under(env)
	}
	v := View{Interface: out.Interface, PortKind: "unknown", Number: -1}
	if v.Interface == "" {
		v.Interface = "unknown"
	}
	if vars := seen.Decides(env); len(vars) > 0 {
		v.PortKind, v.Variable = "variable", vars[0].Text
		if out.Outcome == "listens" && out.Port > 0 {
			v.Fallback = strconv.Itoa(out.Port)
		}
		if out.Outcome != "listens" {
			if o := seen.Under(env.With(map[string]string{v.Variable: "54321"})); o.Outcome == "listens" {
				v.Interface = o.Interface
			}
		}
	} else if out.Outcome == "listens" && out.Port >= 0 {
		v.PortKind, v.Number = "number", out.Port
	}
	if with != nil {
		o := l.Happens(*with)
		if o.Outcome == "listens" && o.Interface == "unknown" { // half of it is no answer
			o.Outcome, o.Reason = "unknown", firstReason(firstReason(l.Host.Under(*with).Text, Servers[l.Server].HostWhy), "the interface is not decided in the source")
		}
		v.Under = &o
	}
	l.View = v
}

// Server is what a server does by itself. Facts measured by running each and
// reading its sockets from the kernel, 2026-11: Node.js 20.20, express 5.3,
// koa 3.3, fastify 5.12, @hono/node-server 2.1, socket.io 4.8, gunicorn 20.1,
// uvicorn 0.17, hypercorn 0.13, waitress 2.1, aiohttp 3.8, tornado 6.2,
// bottle 0.12, flask 2.2, django 3.2, Python 3.11.
type Server struct {
	Host         string // the interface without one given: any, loopback, unknown
	HostWhy      string // why that is not known
	EmptyHost    string // the interface with an empty one
	Port         int    // without one given; 0: the kernel chooses
	PortEnv      string // a variable that it reads by itself
	EmptyEnv     string // what that does where it is empty: exits, random; else it is passed over
	TextEnv      string // what that does where it is no number: default; random, after digits in front; else as TextPort has it
	ParsedEnv    bool   // of that the digits in front count, and the default where there are none, or nought
	Passes       bool   // an empty Over or OverHost is passed over
	HostEnv      string
	EmptyHostEnv bool   // an empty one counts, as EmptyHost has it; else it is passed over
	SocketEnv    string // a variable with the path of a socket, which beats the port
	NilPort      string // what null or undefined does: default, random, exits
	EmptyPort    string // what empty text does: default, exits
	TextPort     string // what text that is no number does: exits, unix
	NumberText   bool   // a number as text is taken
	Hex          bool   // numbers may be written as JavaScript does
	Early        bool   // its arguments and variables are read before the program is loaded; a file of its own may load others
	PortEnvs     string // variables that it reads one after another; what is no number is passed over
	Address      string // a variable with a whole address that beats everything
	Wraps        bool   // of a port above 65535 the lower sixteen bits count, as getaddrinfo has it
	Octal        bool   // text from code with a zero before it is octal, as getaddrinfo has it
	Whole        bool   // text must be a number as it is written: no zero before it
	LooksUp      bool   // only a name is looked up, so that its port wraps; an address is taken as it is (asyncio)
	IPv4         bool   // it makes a socket of IPv4 alone: an address of IPv6 ends it
	Over         string // a variable that beats the port that is set, though not a flag
	OverHost     string // and one that beats the interface
	Paths        string // the characters that begin an address that is a socket file
}

// Servers by key.
var Servers = map[string]Server{
	"node":              {Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "unix", NumberText: true, Hex: true},
	"node options":      {Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true, Hex: true},
	"fastify":           {Host: "loopback", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true, Hex: true},
	"hono":              {Host: "any", EmptyHost: "any", Port: 3000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true, Hex: true},
	"srvx":              {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", HostEnv: "HOST", EmptyEnv: "exits", NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"gunicorn":          {Early: true, Host: "loopback", EmptyHost: "any", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"uvicorn":           {Early: true, LooksUp: true, Host: "loopback", EmptyHost: "any", Port: 8000, PortEnv: "UVICORN_PORT", HostEnv: "UVICORN_HOST", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"uvicorn.run":       {LooksUp: true, Host: "loopback", EmptyHost: "any", Port: 8000, NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"hypercorn":         {Early: true, Host: "loopback", EmptyHost: "any", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"daphne":            {Early: true, Host: "loopback", EmptyHost: "any", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"waitress-serve":    {Early: true, Wraps: true, Host: "any", EmptyHost: "exits", Port: 8080, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"waitress.serve":    {Wraps: true, Host: "any", EmptyHost: "exits", Port: 8080, NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"aiohttp":           {LooksUp: true, Host: "any", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"aiohttp run":       {LooksUp: true, Host: "any", EmptyHost: "unknown", Port: 8080, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"cherrypy":          {Host: "loopback", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "exits", TextPort: "exits"},
	"aiohttp.web":       {Early: true, Host: "loopback", EmptyHost: "any", Port: 8080, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"bottle":            {Host: "loopback", EmptyHost: "any", Port: 8080, NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"tornado":           {Wraps: true, Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "random", TextPort: "exits", NumberText: true},
	"asyncio":           {LooksUp: true, Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "random", TextPort: "exits", NumberText: true},
	"socketserver":      {Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"http server class": {IPv4: true, Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"flask":             {Wraps: true, Host: "loopback", EmptyHost: "loopback", Port: 5000, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true},
	"quart":             {Host: "loopback", EmptyHost: "loopback", Port: 5000, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true},
	"sanic":             {Host: "loopback", EmptyHost: "loopback", Port: 8000, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true},
	"flask run":         {Wraps: true, Host: "loopback", EmptyHost: "any", Port: 5000, PortEnv: "FLASK_RUN_PORT", HostEnv: "FLASK_RUN_HOST", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"runserver":         {Host: "loopback", EmptyHost: "loopback", Port: 8000, TextPort: "exits", NumberText: true},
	"http.server":       {Wraps: true, Host: "any", EmptyHost: "any", Port: 8000, TextPort: "exits", NumberText: true},
	"fastapi run":       {Host: "any", EmptyHost: "any", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"fastapi dev":       {Host: "loopback", EmptyHost: "loopback", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"next":              {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", EmptyEnv: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"vite":              {Host: "loopback", EmptyHost: "any", Port: 5173, TextPort: "exits", NumberText: true},
	"vite preview":      {Host: "loopback", EmptyHost: "any", Port: 4173, TextPort: "exits", NumberText: true},
	"serve":             {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", EmptyEnv: "exits", TextPort: "exits", NumberText: true},
	"sirv":              {Host: "loopback", EmptyHost: "any", Port: 8080, EmptyPort: "exits", TextPort: "exits", NumberText: true, Over: "PORT", OverHost: "HOST", Passes: true},
	"http-server":       {Host: "any", EmptyHost: "any", Port: 8080, PortEnv: "PORT", ParsedEnv: true, TextPort: "unix", NumberText: true},
	"fastify-cli":       {Host: "unknown", HostWhy: "any interface in a container, loopback elsewhere", EmptyHost: "any", Port: 3000, PortEnv: "FASTIFY_PORT PORT", HostEnv: "FASTIFY_ADDRESS", TextPort: "exits", NumberText: true},
	"spring":            {Host: "any", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true, Over: "SERVER_PORT", OverHost: "SERVER_ADDRESS"},
	"quarkus":           {Host: "any", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true, Over: "QUARKUS_HTTP_PORT", OverHost: "QUARKUS_HTTP_HOST"},
	"java":              {Host: "any", EmptyHost: "loopback", NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"http4k":            {Host: "any", EmptyHost: "any", Port: 8000, NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"javalin":           {Host: "any", EmptyHost: "any", Port: 8080, NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"vert.x":            {Host: "any", EmptyHost: "any", Port: 80, NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"ktor":              {Host: "any", EmptyHost: "any", Port: 80, NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"jwebserver":        {Host: "loopback", EmptyHost: "exits", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"go":                {Host: "any", Port: 80},
	"gin":               {Host: "any", Port: 8080, PortEnv: "PORT", TextPort: "exits", NumberText: true},
	"php -S":            {Host: "any"},
	"php":               {Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"php raw":           {Wraps: true, Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"php socket":        {Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"rust":              {Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"rocket":            {Host: "loopback", EmptyHost: "any", Port: 8000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true, Over: "ROCKET_PORT", OverHost: "ROCKET_ADDRESS"},
	"rocket custom":     {Host: "loopback", EmptyHost: "any", Port: 8000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"dotnet":            {Host: "any", EmptyHost: "exits", NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"kestrel":           {Host: "loopback", Port: 5000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"kestrel default":   {Host: "loopback", Port: 5000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"bandit":            {Host: "any", EmptyHost: "exits", Port: 4000, NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"gen_tcp":           {Host: "any", EmptyHost: "exits", NilPort: "exits", EmptyPort: "exits", TextPort: "exits"},
	"phoenix":           {Host: "any", EmptyHost: "exits", Port: 4000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"micronaut":         {Host: "any", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true, Over: "MICRONAUT_SERVER_PORT", OverHost: "MICRONAUT_SERVER_HOST"},
	"play":              {Host: "any", EmptyHost: "any", Port: 9000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true, PortEnv: "PLAY_HTTP_PORT", HostEnv: "PLAY_HTTP_ADDRESS"},
	"helidon":           {Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true, Over: "SERVER_PORT", OverHost: "SERVER_HOST"},
	"ktor engine":       {Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"nginx":             {Host: "any", EmptyHost: "exits", Port: 80, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"apache":            {Host: "any", EmptyHost: "exits", Port: 80, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"php-fpm":           {Host: "any", Port: 9000},
	"tomcat":            {Host: "any", Port: 8080},
	"sveltekit":         {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", HostEnv: "HOST", EmptyEnv: "exits", EmptyHostEnv: true, SocketEnv: "SOCKET_PATH", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"nitro":             {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "NITRO_PORT PORT", HostEnv: "NITRO_HOST HOST", SocketEnv: "NITRO_UNIX_SOCKET", TextPort: "exits", NumberText: true},
	"astro":             {Host: "loopback", EmptyHost: "any", Port: 4321, PortEnv: "PORT", HostEnv: "HOST", EmptyHostEnv: true, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"astro preview":     {Host: "loopback", EmptyHost: "any", Port: 4321, HostEnv: "HOST", EmptyHostEnv: true, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"astro static":      {Host: "loopback", EmptyHost: "any", Port: 4321, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"json-server":       {Host: "loopback", EmptyHost: "any", Port: 3000, TextPort: "exits", NumberText: true},
	"next standalone":   {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", HostEnv: "HOSTNAME", TextPort: "exits", NumberText: true, ParsedEnv: true},
	"remix-serve":       {Host: "any", EmptyHost: "any", Port: 3000, PortEnv: "PORT", HostEnv: "HOST", EmptyEnv: "random", TextEnv: "default", TextPort: "exits", NumberText: true},
	"php stream":        {Host: "any", EmptyHost: "any", NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"artisan serve":     {Host: "loopback", EmptyHost: "loopback", Port: 8000, PortEnv: "SERVER_PORT", HostEnv: "SERVER_HOST", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"deno":              {Host: "any", EmptyHost: "exits", Port: 8000, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true, Address: "DENO_SERVE_ADDRESS"},
	"deno serve":        {Host: "any", EmptyHost: "exits", Port: 8000, EmptyPort: "exits", TextPort: "exits", NumberText: true, Address: "DENO_SERVE_ADDRESS"},
	"bun":               {Host: "any", EmptyHost: "any", Port: 3000, PortEnvs: "BUN_PORT PORT NODE_PORT", NilPort: "default", EmptyPort: "default", TextPort: "exits", NumberText: true},
	"puma":              {Wraps: true, Octal: true, Host: "any", Port: 9292, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"rackup":            {Wraps: true, Host: "loopback", EmptyHost: "any", Port: 9292, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"sinatra":           {Octal: true, Wraps: true, Host: "loopback", EmptyHost: "any", Port: 4567, PortEnv: "PORT", NilPort: "9292", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"tcpserver":         {Wraps: true, Host: "any", EmptyHost: "any", NilPort: "random", EmptyPort: "random", TextPort: "exits", NumberText: true},
	"webrick":           {Wraps: true, Whole: true, Host: "any", EmptyHost: "any", Port: 80, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"rack server":       {Wraps: true, Host: "any", EmptyHost: "any", Port: 9292, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"webrick run":       {Wraps: true, Whole: true, Host: "loopback", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"puma run":          {Wraps: true, Octal: true, Host: "any", EmptyHost: "any", Port: 9292, NilPort: "default", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"ruby httpd":        {Wraps: true, Host: "any", EmptyHost: "any", Port: 8080, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"rails":             {Host: "loopback", EmptyHost: "any", Port: 3000, PortEnv: "PORT", HostEnv: "BINDING", EmptyEnv: "random", TextEnv: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"unicorn":           {Paths: "/~", Wraps: true, Host: "any", EmptyHost: "any", Port: 8080, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"thin":              {Wraps: true, Host: "any", EmptyHost: "any", Port: 3000, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"falcon":            {Host: "loopback", EmptyHost: "any", Port: 9292, EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"uwsgi":             {Host: "any", EmptyHost: "any", EmptyPort: "random", TextPort: "random", NumberText: true},
	"apollo":            {Host: "any", EmptyHost: "any", Port: 4000, NilPort: "random", EmptyPort: "exits", TextPort: "exits", NumberText: true, Hex: true},
	"grpc":              {Host: "any", EmptyHost: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"dash":              {Host: "loopback", EmptyHost: "loopback", Port: 8050, PortEnv: "PORT", HostEnv: "HOST", NilPort: "exits", EmptyPort: "exits", TextPort: "exits", NumberText: true},
	"nicegui":           {Host: "any", EmptyHost: "any", Port: 8080, NilPort: "default", EmptyPort: "exits", TextPort: "exits"},
	"gradio":            {Host: "loopback", EmptyHost: "loopback", Port: 7860, PortEnv: "GRADIO_SERVER_PORT", HostEnv: "GRADIO_SERVER_NAME", NilPort: "default", EmptyPort: "exits", TextPort: "exits"},
	"streamlit":         {Host: "any", EmptyHost: "any", Port: 8501, PortEnv: "STREAMLIT_SERVER_PORT", HostEnv: "STREAMLIT_SERVER_ADDRESS", TextPort: "exits", NumberText: true},
}

// Outcome is what a listener does under an environment.
type Outcome struct {
	Outcome   string // listens, exits, unknown, skipped
	Interface string // any, loopback, an address, unix:PATH, unknown
	Port      int    // 0 when the kernel chooses; -1 when not known
	Reason    string
}

func exits(why string) Outcome { return Outcome{"exits", "", -1, why} }
func notKnown(why string) Outcome {
	if why == "" {
		why = "what it is given could not be followed in the source"
	}
	return Outcome{"unknown", "unknown", -1, why}
}

// Under says what the listener does in an environment: in the first process of
// the program or, where that one does not come to it, in those that it makes.
func (l *Listener) Under(env value.Environ) Outcome {
	if Servers[l.Server].Early && (l.Via == "flag" || l.Via == "default") {
		env = env.Early()
	}
	given := env
	env = l.commanded(env)
	out := l.under(env)
	if out.Outcome == "skipped" && !env.Worker && slices.ContainsFunc(l.Guards, value.Forks) {
		env.Worker = true
		out = l.under(env)
	}
	if kept := l.kept(out); kept.Outcome == "unknown" {
		out = kept
	}
	if l.Follow != nil && !env.Open && (out.Outcome == "unknown" || out.Outcome == "listens" && out.Interface == "unknown") {
		// What ends the program besides is not for the rules of ports to say.
		if o, ok := l.Follow(given); ok && o.Outcome != "exits" {
			return l.kept(o)
		}
	}
	return l.kept(out)
}

// NamesHost begins the reason of what is not known of a host that is a name.
const NamesHost = "whether the name "

// elsewhere says why an interface is none of the machine, certainly or as far as can be
// told: a number is an address as inet_aton has it, a name must be looked up.
func elsewhere(at string) (certain bool, why string) {
	switch {
	case at == "" || at == "any" || at == "loopback" || at == "unknown" || strings.HasPrefix(at, "unix:") || strings.HasPrefix(at, "/") || strings.ContainsAny(at, ":%,"):
		return false, ""
	case strings.Trim(at, "0123456789") == "":
		return true, "the host is " + strconv.Quote(at) + ", which is no address of the machine"
	}
	if _, err := netip.ParseAddr(at); err == nil {
		return false, ""
	}
	return false, NamesHost + strconv.Quote(at) + " leads to an address of the machine"
}

// kept is an outcome that the runtime may forbid.
func (l *Listener) kept(out Outcome) Outcome {
	if l.Caught && (l.Ended != "" || out.Outcome == "exits") {
		return notKnown("what the command runs where this program fails")
	}
	if l.Ended != "" {
		return exits(l.Ended)
	}
	if out.Outcome == "listens" {
		if out.Interface == "0" { // 0.0.0.0, as inet_aton has it
			out.Interface = "any"
		}
		if p, ok := strings.CutPrefix(out.Interface, "unix:"+place.Root+"/"); ok {
			out.Interface = "unix:" + p
		}
		if not, why := elsewhere(out.Interface); why != "" && not {
			return exits(why)
		} else if why != "" {
			return notKnown(why)
		}
	}
	if l.Doubt != "" && out.Outcome == "listens" {
		return notKnown(l.Doubt)
	}
	if l.Net != nil && out.Outcome == "listens" && l.Net(out) {
		return exits("the runtime is not given the network there")
	}
	return out
}

// doubts is Denied where the values are doubted.
func (l *Listener) doubts(env value.Environ, told Outcome, doubted bool) (Outcome, bool) {
	if !doubted {
		return told, false
	}
	return l.Denied(env, told)
}

// Denied says what going through the program tells against what the values
// tell: that it listens elsewhere. ok is false where it does not.
func (l *Listener) Denied(env value.Environ, told Outcome) (out Outcome, ok bool) {
	if l.Follow == nil || told.Outcome != "listens" && told.Outcome != "exits" {
		return told, false
	}
	out, ok = l.Follow(env)
	return out, ok && out.Outcome == "listens" && (out.Outcome != told.Outcome || out.Port != told.Port || out.Interface != told.Interface)
}

// CameTo says of a listener that the program comes to it, where what it listens on
// could not be told by going through the program.
const CameTo = "came to"

const endsBefore = "the program ends itself before it listens"

// Happens says what becomes of the listener in an environment, by going through
// the program where that can be done.
func (l *Listener) Happens(env value.Environ) Outcome {
	if l.Ended != "" {
		return l.kept(exits(l.Ended))
	}
	var open Outcome // what going through the program could not decide
	if l.Follow != nil {
		o, ok := l.Follow(env)
		if ok {
			return l.kept(o)
		}
		open = o
	}
	out := l.Under(env)
	if open.Outcome == CameTo && (out.Outcome == "skipped" || out.Outcome == "exits" && out.Reason == endsBefore) {
		return notKnown(open.Reason)
	}
	if out.Outcome != "listens" {
		return out
	}
	if open.Outcome == "unknown" {
		return open
	}
	for _, g := range l.Guards { // a condition that is not known
		o := g.Under(env)
		if _, ok := o.Truth(false); !ok && !value.Forks(g) {
			if o.Text == "" {
				return notKnown("whether the program comes to this")
			}
			return notKnown(o.Text + " decides whether it comes to this")
		}
	}
	return out
}

func (l *Listener) under(env value.Environ) Outcome {
	for i, g := range l.Guards {
		o := g.Under(env)
		if o.Raise {
			return exits(o.Text)
		}
		if yes, ok := o.Truth(false); ok && !yes {
			if i < len(l.Ends) && l.Ends[i] {
				return exits(endsBefore)
			}
			return Outcome{"skipped", "", -1, "its condition does not hold"}
		}
	}
	if l.Missing {
		return exits("a flag has no value")
	}
	s := Servers[l.Server]
	if l.Server == "kestrel default" {
		return l.kestrel(s, env)
	}
	if a, ok := env.Lookup(s.Address, false); ok && s.Address != "" {
		if rest, ok := strings.CutPrefix(a, "tcp:"); ok {
			return goAddress(rest)
		}
	}
	if given, ok := env.Lookup("GUNICORN_CMD_ARGS", false); ok && l.Server == "gunicorn" && l.Via != "flag" {
		if binds := GunicornBinds(given); len(binds) > 0 { // they beat its file and its default
			over := *l
			over.Bind = value.Text(binds[0], l.At)
			return over.bound(s, env)
		}
	}
	if l.Bind != nil {
		return l.bound(s, env)
	}
	if l.Named != nil {
		named, ok := l.named(env)
		if !ok {
			return notKnown("the name of the application")
		}
		l = named
	}
	if path, ok := env.Lookup(s.SocketEnv, false); ok && s.SocketEnv != "" && path != "" {
		return Outcome{"listens", "unix:" + path, -1, s.SocketEnv + " names a socket"}
	}
	if l.Socket != nil {
		if o := l.Socket.Under(env); o.Kind == value.Str && o.Text != "" {
			return Outcome{"listens", "unix:" + o.Text, -1, "a variable names a socket"}
		}
	}
	l = l.over(s, env)
	if v, ok := env.Lookup("PORT", false); ok && v != "" && l.Server == "sinatra" { // read before anything is set
		if _, err := strconv.ParseInt(strings.ReplaceAll(strings.TrimSpace(v), "_", ""), 0, 64); err != nil {
			if o := s.text(v); o.Outcome == "exits" {
				return o
			}
		}
	}
	host := s.Host
	if l.developed(s, env) {
		host = "any"
	}
	if l.Host != nil {
		o := l.Host.Under(env)
		switch {
		case o.Raise:
			return exits(o.Text)
		case o.Absent():
		case o.Kind == value.Null || o.Kind == value.Undef:
			if l.Server == "uvicorn.run" {
				host = "any"
			}
		case !o.Known() || o.Kind == value.External:
			host = "unknown"
		case o.Kind == value.List:
			host = interfaces(o.List)
		case o.Kind == value.Bool && o.Num != 0:
			host = "any" // vite --host
		case o.Text == "":
			host = s.EmptyHost
		case s.IPv4 && strings.Contains(o.Text, ":"):
			return exits("its socket is one of IPv4, and the host is " + strconv.Quote(o.Text))
		case o.Text[0] == '-' || strings.ContainsAny(o.Text, " \t\n"): // RFC 1123, 2.1
			return exits("the host is " + strconv.Quote(o.Text) + ", which is no name")
		default:
			host = Interface(o.Text)
		}
	} else if s.HostEnv != "" {
		for name := range strings.FieldsSeq(s.HostEnv) {
			if v, ok := env.Lookup(name, false); ok && (v != "" || s.EmptyHostEnv) {
				host = s.EmptyHost
				if v != "" {
					host = Interface(v)
				}
				break
			}
		}
	}
	if host == "exits" {
		return exits("the host is empty")
	}
	if s.LooksUp {
		s.Wraps = true
		if l.Host != nil {
			_, err := netip.ParseAddr(l.Host.Under(env).Text)
			s.Wraps = err != nil
		} else if s.Host == "loopback" {
			s.Wraps = false
		}
	}
	out := l.port(s, env)
	if out.Outcome == "listens" && !strings.HasPrefix(out.Interface, "unix:") {
		out.Interface = host
	}
	return out
}

// interfaces is the one interface that a list of hosts leads to; unknown where
// they are several.
func interfaces(hosts []value.Outcome) string {
	all := ""
	for _, h := range hosts {
		one := "unknown"
		switch h.Kind {
		case value.Str:
			if one = Interface(h.Text); h.Text == "" {
				one = "any"
			}
		case value.Null:
			one = "any"
		}
		if all != "" && one != all {
			return "unknown"
		}
		all = one
	}
	if all == "" {
		return "any"
	}
	return all
}

// modes are the variables that say what a server of Ruby is run for, the first
// that is set counts; in development it listens on loopback only.
var modes = map[string]string{"rackup": "RACK_ENV", "webrick run": "RACK_ENV", "sinatra": "APP_ENV RACK_ENV", "rails": "RAILS_ENV RACK_ENV"}

// developed reports whether a server that listens on loopback while it is
// developed is run for something else.
func (l *Listener) developed(_ Server, env value.Environ) bool {
	if l.Mode != nil {
		o := l.Mode.Under(env)
		return o.Kind == value.Str && o.Text != "development"
	}
	for name := range strings.FieldsSeq(modes[l.Server]) {
		if mode, ok := env.Lookup(name, false); ok && (mode != "" || l.Server == "rackup") {
			return mode != "development"
		}
	}
	return false
}

// named puts the parts of its application's address in the place of what the call
// does not give; ok is false where one of them counts and is not known (Flask 3.1,
// Flask.run: SERVER_NAME).
func (l *Listener) named(env value.Environ) (c *Listener, ok bool) {
	nothing := func(v *value.Value, more string) bool {
		if v == nil {
			return true
		}
		o := v.Under(env)
		return o.Absent() || o.Kind == value.Null || o.Kind == value.Str && o.Text == more
	}
	host, port := nothing(l.Host, ""), nothing(l.Port, "")
	o := l.Named.Under(env)
	switch {
	case !host && !port, o.Kind == value.Null, o.Kind == value.Undef:
		return l, true
	case o.Kind != value.Str:
		return l, false
	}
	with := *l
	h, p, _ := strings.Cut(o.Text, ":")
	if host && h != "" {
		with.Host = value.Text(h, l.Named.At)
	}
	if port && p != "" {
		with.Port = value.Text(p, l.Named.At)
	}
	return &with, true
}

// over puts variables that beat what files set in their place.
func (l *Listener) over(s Server, env value.Environ) *Listener {
	c := *l
	if v, ok := env.Lookup(s.Over, false); ok && s.Over != "" && !l.FlagPort && !(s.Passes && v == "") {
		c.Port = value.Text(v, l.PortAt)
	}
	if v, ok := env.Lookup(s.OverHost, false); ok && s.OverHost != "" && !l.FlagHost && !(s.Passes && v == "") {
		c.Host = value.Text(v, l.HostAt)
	}
	return &c
}

func (l *Listener) port(s Server, env value.Environ) Outcome {
	if l.Spare != nil && (l.Port == nil || l.Port.Under(env).Absent()) {
		if n, ok := s.fromEnvs(env); ok {
			return Outcome{"listens", "", n, ""}
		}
		spare := *l
		spare.Port, spare.Spare = l.Spare, nil
		return spare.port(Server{EmptyPort: "exits", TextPort: "exits", NumberText: true}, env)
	}
	if l.Port == nil || l.vanishes(l.Port, env) || l.Port.Under(env).Absent() {
		if s.PortEnv != "" {
			for name := range strings.FieldsSeq(s.PortEnv) {
				v, ok := env.Lookup(name, false)
				switch {
				case !ok, v == "" && s.EmptyEnv == "":
					continue
				case v == "" && s.EmptyEnv == "random":
					return Outcome{"listens", "", 0, name + " is empty, which is taken for 0: the kernel chooses a port"}
				case v == "":
					return exits(name + " is empty")
				case s.ParsedEnv:
					v = strings.TrimSpace(v)
					n, _ := strconv.Atoi(v[:len(v)-len(strings.TrimLeft(v, "0123456789"))])
					if n == 0 {
						return Outcome{"listens", "", s.Port, strconv.Quote(v) + " is no number of a port: the default counts"}
					}
					return s.text(strconv.Itoa(n))
				case s.TextEnv == "random": // as to_i of Ruby has it
					v = strings.TrimSpace(v)
					n, _ := strconv.Atoi(v[:len(v)-len(strings.TrimLeft(v, "0123456789"))])
					if n == 0 {
						return Outcome{"listens", "", 0, name + " is no number, which is taken for 0: the kernel chooses a port"}
					}
					return s.text(strconv.Itoa(n))
				case s.TextEnv == "default" && math.IsNaN(value.ToNumber(v)):
					return Outcome{"listens", "", s.Port, name + " is no number: the default counts"}
				}
				return s.text(v)
			}
			if env.Open {
				return notKnown("decided by " + s.PortEnv)
			}
		}
		if n, ok := s.fromEnvs(env); ok {
			return Outcome{"listens", "", n, ""}
		}
		return Outcome{"listens", "", s.Port, ""}
	}
	o := l.Port.Under(env)
	if o.Raise {
		return exits(o.Text)
	}
	switch o.Kind {
	case value.Null, value.Undef:
		switch s.NilPort {
		case "default":
			if n, ok := s.fromEnvs(env); ok {
				return Outcome{"listens", "", n, ""}
			}
			return Outcome{"listens", "", s.Port, ""}
		case "random":
			return Outcome{"listens", "", 0, "the port is not set: the kernel chooses one"}
		}
		if n, err := strconv.Atoi(s.NilPort); err == nil { // that of what runs it
			return Outcome{"listens", "", n, ""}
		}
		return exits("the port is not set")
	case value.Num:
		n := o.Num
		if s.Wraps && n == math.Trunc(n) && n > 65535 && n < 1<<31 {
			return Outcome{"listens", "", int(n) & 0xffff, "of " + o.String() + " the lower sixteen bits count"}
		}
		if math.IsNaN(n) || n != math.Trunc(n) || n < 0 || n > 65535 {
			return exits("the port is " + o.String())
		}
		return Outcome{"listens", "", int(n), ""}
	case value.Str:
		if n, ok := s.fromEnvs(env); ok && o.Text == "" {
			return Outcome{"listens", "", n, ""}
		}
		if s.Octal && l.Via != "flag" && len(o.Text) > 1 && o.Text[0] == '0' {
			n, err := strconv.ParseUint(o.Text, 0, 31)
			if err != nil {
				return exits("the port is " + strconv.Quote(o.Text) + ", which is no number")
			}
			return Outcome{"listens", "", int(n) & 0xffff, strconv.Quote(o.Text) + " is read as octal"}
		}
		if l.Bare && o.Text == "" {
			return exits("the flag has no value when the variable is not set")
		}
		return s.text(o.Text)
	case value.Bool:
		return exits("the port is " + o.String())
	}
	return notKnown(o.Text)
}

// fromEnvs gives the port of the first of the server's variables that holds a
// number.
func (s Server) fromEnvs(env value.Environ) (int, bool) {
	for name := range strings.FieldsSeq(s.PortEnvs) {
		if v, ok := env.Lookup(name, false); ok {
			if n, err := strconv.ParseUint(strings.TrimPrefix(v, "+"), 10, 16); err == nil {
				return int(n), true
			}
		}
	}
	return 0, false
}

// vanishes reports whether a shell drops the argument: an unquoted variable
// that is empty leaves no word behind.
func (l *Listener) vanishes(v *value.Value, env value.Environ) bool {
	o := v.Under(env)
	return l.Free && l.Bare && o.Kind == value.Str && o.Text == ""
}

func (s Server) text(t string) Outcome {
	if t == "" {
		if s.EmptyPort == "default" {
			return Outcome{"listens", "", s.Port, ""}
		}
		if s.EmptyPort == "random" {
			return Outcome{"listens", "", 0, ""}
		}
		return exits("the port is empty")
	}
	clean := strings.TrimSpace(t)
	if s.Hex { // as Number() converts; what is none, or below nothing, is a path
		n := value.ToNumber(t)
		switch {
		case clean == "":
			return exits("the port is empty")
		case n >= 0 && (n != math.Trunc(n) || n > 65535):
			return exits("the port is " + t)
		case n >= 0:
			return Outcome{"listens", "", int(n), ""}
		}
	} else if n, err := strconv.ParseInt(clean, 10, 32); err == nil && s.NumberText {
		if s.Whole && strconv.FormatInt(n, 10) != t {
			return exits("the port is " + strconv.Quote(t) + ", which is no integer as it is written")
		}
		if s.Wraps && n > 65535 {
			return Outcome{"listens", "", int(n & 0xffff), "of " + t + " the lower sixteen bits count"}
		}
		if n < 0 || n > 65535 {
			return exits("the port is " + t)
		}
		return Outcome{"listens", "", int(n), ""}
	}
	if s.TextPort == "random" {
		return Outcome{"listens", "", 0, "the text " + strconv.Quote(t) + " is taken for the port 0"}
	}
	if s.TextPort == "unix" {
		return Outcome{"listens", "unix:" + t, -1, "the text is taken for the path of a socket"}
	}
	return exits("the port is " + strconv.Quote(t) + ", which is no number")
}

// GunicornBinds gives the addresses in arguments of gunicorn that stand in a
// variable (gunicorn 23 settings, "Configuration Overview").
func GunicornBinds(line string) (list []string) {
	words := strings.Fields(strings.NewReplacer(`"`, "", "'", "").Replace(line))
	for i, w := range words {
		flag, v, given := strings.Cut(w, "=")
		switch {
		case (flag == "--bind" || flag == "-b") && !given && i+1 < len(words):
			list = append(list, words[i+1])
		case flag == "--bind" && given:
			list = append(list, v)
		case strings.HasPrefix(w, "-b") && len(w) > 2:
			list = append(list, w[2:])
		}
	}
	return list
}

// bound reads host:port addresses as gunicorn and hypercorn do.
func (l *Listener) bound(s Server, env value.Environ) Outcome {
	if l.vanishes(l.Bind, env) {
		return Outcome{"listens", s.Host, s.Port, ""}
	}
	o := l.Bind.Under(env)
	if o.Raise {
		return exits(o.Text)
	}
	if l.Server == "kestrel" && (o.Kind == value.Null || o.Kind == value.Undef || o.Kind == value.Str && o.Text == "") {
		return Outcome{"listens", s.Host, s.Port, ""}
	}
	if o.Kind != value.Str {
		return notKnown(o.Text)
	}
	addr := o.Text
	if l.Server == "kestrel" {
		return kestrelAddress(s, addr)
	}
	if l.Server == "go" || l.Server == "gin" {
		if p, ok := strings.CutPrefix(addr, "unix:"); ok && !strings.Contains(p, ":") {
			return Outcome{"listens", "unix:" + p, -1, ""}
		}
		return goAddress(addr)
	}
	if l.Server == "puma" {
		return pumaAddress(addr)
	}
	if l.Server == "php -S" {
		return phpAddress(addr)
	}
	if l.Server == "runserver" {
		return runserver(addr)
	}
	if l.Server == "http.server" || l.Server == "asyncio" {
		return s.text(addr)
	}
	if l.Server == "daphne" {
		return endpoint(s, addr)
	}
	if p, ok := strings.CutPrefix(addr, "unix:"); ok {
		return Outcome{"listens", "unix:" + strings.TrimPrefix(p, "//"), -1, ""}
	}
	if strings.HasPrefix(addr, "fd://") {
		return notKnown("a socket that is handed over")
	}
	if l.Server == "nginx" || l.Server == "apache" { // a port alone, or an address with one
		if strings.Trim(addr, "0123456789") == "" {
			out := s.text(addr)
			if out.Outcome == "listens" {
				out.Interface = "any"
			}
			return out
		}
		addr = strings.Replace(addr, "*:", "0.0.0.0:", 1)
		if !strings.Contains(strings.TrimPrefix(addr, "["), ":") && !address(addr) {
			return exits("the address is " + strconv.Quote(addr))
		}
	}
	if l.Server == "php socket" || l.Server == "php stream" {
		return phpSocket(addr, l.Server == "php stream")
	}
	if l.Server == "waitress.serve" && len(strings.Fields(addr)) > 1 {
		return notKnown("several addresses")
	}
	if strings.HasPrefix(l.Server, "waitress") && strings.HasSuffix(addr, ":") && len(addr) > 1 {
		return Outcome{"listens", Interface(strings.TrimSuffix(addr, ":")), 0, ""}
	}
	if addr != "" && strings.Contains(s.Paths, addr[:1]) {
		return Outcome{"listens", "unix:" + addr, -1, ""}
	}
	if l.Server == "uwsgi" && !strings.Contains(addr, ":") {
		return Outcome{"listens", "unix:" + addr, -1, "the text is taken for the path of a socket"}
	}
	addr = strings.TrimPrefix(strings.TrimPrefix(addr, "tcp://"), "http://")
	if strings.HasPrefix(addr, "0.0.0.0:$") || strings.Contains(addr, "$") {
		return exits("the port is the text " + strconv.Quote(addr[strings.IndexByte(addr, '$'):]))
	}
	if strings.Contains(addr, ",") {
		return exits(strconv.Quote(addr) + " is not one address")
	}
	host, port, has := addr, "", false
	if i := strings.LastIndexByte(addr, ':'); i >= 0 && !strings.HasSuffix(addr, "]") {
		host, port, has = addr[:i], addr[i+1:], true
	}
	if !has {
		if strings.Trim(addr, "0123456789") == "" && addr != "" && l.Server == "unicorn" { // a port (unicorn 6.0, Socket helper)
			out := s.text(addr)
			if out.Outcome == "listens" {
				out.Interface = "any"
			}
			return out
		}
		if strings.Trim(addr, "0123456789") == "" && addr != "" && l.Server != "waitress-serve" {
			return exits("the address " + addr + " is taken for a host")
		}
		return Outcome{"listens", Interface(host), s.Port, ""}
	}
	out := s.text(port)
	if out.Outcome == "listens" {
		if host == "" {
			out.Interface = s.EmptyHost
		} else {
			out.Interface = Interface(host)
		}
	}
	return out
}

// goAddress reads an address as package net of Go does: host:port, where both
// may be empty; names of services count as ports.
func goAddress(addr string) Outcome {
	if addr == "" {
		return Outcome{"listens", "any", 80, ""}
	}
	i := strings.LastIndexByte(addr, ':')
	if i < 0 {
		return exits("the address " + strconv.Quote(addr) + " has no port in it")
	}
	host, port := addr[:i], addr[i+1:]
	if strings.Contains(host, ":") && !(strings.HasPrefix(host, "[") && strings.HasSuffix(host, "]")) {
		return exits("the address " + strconv.Quote(addr) + " has too many colons")
	}
	if strings.Count(host, "[") > 1 { // net.JoinHostPort puts brackets around a host that has some
		return exits("the address " + strconv.Quote(addr) + " has brackets in brackets")
	}
	out := Outcome{"listens", "any", 0, ""}
	if strings.Trim(host, "0123456789") == "" && host != "" { // Go looks for a host of that name
		return exits("the host is " + strconv.Quote(host) + ", which is no address")
	}
	if host != "" {
		out.Interface = Interface(strings.Trim(host, "[]"))
	}
	switch port {
	case "":
		return out
	case "http":
		out.Port = 80
		return out
	case "https":
		out.Port = 443
		return out
	}
	n, err := strconv.ParseUint(port, 10, 32)
	if err != nil || n > 65535 {
		if _, err := strconv.ParseUint(strings.TrimLeft(port, " \t"), 10, 16); err == nil { // getaddrinfo passes over blanks
			return notKnown("whether the program is built with cgo, which takes the port " + strconv.Quote(port))
		}
		return exits("the port is " + strconv.Quote(port))
	}
	out.Port = int(n)
	return out
}

// pumaAddress reads a bind of Puma: tcp://host:port, where the port may be
// missing, or unix:// and a path.
func pumaAddress(addr string) Outcome {
	if p, ok := strings.CutPrefix(addr, "unix://"); ok {
		p, _, _ = strings.Cut(p, "?")
		return Outcome{"listens", "unix:" + p, -1, ""}
	}
	rest, ok := strings.CutPrefix(addr, "tcp://")
	if !ok {
		if rest, ok = strings.CutPrefix(addr, "ssl://"); !ok {
			return exits("the address " + strconv.Quote(addr) + " does not begin with tcp://")
		}
	}
	rest, _, _ = strings.Cut(rest, "?")
	host, port := rest, ""
	if i := strings.LastIndexByte(rest, ':'); i >= 0 && !strings.HasSuffix(rest, "]") {
		host, port = rest[:i], rest[i+1:]
	}
	out := Outcome{"listens", Interface(strings.Trim(host, "[]")), 0, ""}
	if port == "" {
		return out
	}
	n, err := strconv.ParseUint(port, 10, 31)
	if err != nil {
		return exits("the port is " + strconv.Quote(port))
	}
	out.Port = int(n) & 0xffff
	return out
}

// phpAddress reads the address of PHP's own server: a host and a port, both
// there; an empty port is chosen by the kernel.
func phpAddress(addr string) Outcome {
	i := strings.LastIndexByte(addr, ':')
	if i < 0 {
		return exits("the address " + strconv.Quote(addr) + " has no port in it")
	}
	host, port := addr[:i], addr[i+1:]
	if host == "" {
		return exits("the address " + strconv.Quote(addr) + " has no host in it")
	}
	if strings.Contains(host, ":") && host[0] != '[' {
		return exits("the address is " + strconv.Quote(addr))
	}
	out := Outcome{"listens", Interface(strings.Trim(host, "[]")), 0, ""}
	if host == "0" {
		out.Interface = "any"
	}
	if port == "" {
		return out
	}
	n, err := strconv.ParseUint(port, 10, 32)
	if err != nil || n > 65535 {
		return exits("the port is " + strconv.Quote(port))
	}
	out.Port = int(n)
	return out
}

// runserver reads Django's addrport argument.
func runserver(addr string) Outcome {
	host, port := "", addr
	if i := strings.LastIndexByte(addr, ':'); i >= 0 {
		host, port = addr[:i], addr[i+1:]
		if host == "" {
			return exits(strconv.Quote(addr) + " is not a valid port number or address:port pair")
		}
	}
	n, err := strconv.Atoi(port)
	if err != nil || n < 0 || n > 65535 {
		return exits(strconv.Quote(addr) + " is not a valid port number or address:port pair")
	}
	if host == "" {
		return Outcome{"listens", "loopback", n, ""}
	}
	return Outcome{"listens", Interface(host), n, ""}
}

// Interface names the interface of a host: any, loopback, or the address.
func Interface(host string) string {
	h := strings.Trim(strings.TrimSpace(host), "[]")
	switch strings.ToLower(h) {
	case "0.0.0.0", "::", "*", "0", "[::]", "true":
		return "any"
	case "localhost", "::1", "ip6-localhost":
		return "loopback"
	}
	if a, err := netip.ParseAddr(h); err == nil {
		if a.IsLoopback() {
			return "loopback"
		}
		if a.IsUnspecified() {
			return "any"
		}
	}
	return h
}

// Decides lists the variables that by themselves decide the port: with the
// variable set to a number, the listener takes that number.
func (l *Listener) Decides(env value.Environ) []*value.Value {
	const probe = 54321
	var list []*value.Value
	asked := l.PortVariables()
	if len(asked) == 0 && l.Asked != nil && (l.Bind != nil && l.Bind.Open() || l.Bind == nil && l.Port.Open()) {
		asked = l.Asked()
	}
	for _, v := range asked {
		try := env.With(map[string]string{v.Text: strconv.Itoa(probe)})
		if o := l.Under(try); o.Outcome == "listens" && o.Port == probe {
			list = append(list, v)
		}
	}
	return list
}

// PortVariables lists the variables in the port, and the one that the server
// reads by itself.
func (l *Listener) PortVariables() []*value.Value {
	var list []*value.Value
	switch {
	case l.Bind != nil:
		list = l.Bind.Variables()
	case l.Port != nil:
		list = l.Port.Variables()
	default:
		for e := range strings.FieldsSeq(Servers[l.Server].PortEnv) {
			list = append(list, value.Variable(e, value.ReadsUndef, l.At))
		}
	}
	for _, s := range l.Commanded {
		list = append(list, s.Value.Variables()...)
	}
	return list
}

func firstReason(a, b string) string {
	if a != "" {
		return a
	}
	return b
}

// Endpoint reads what a text says of an endpoint of Twisted: tcp:8080:interface=127.0.0.1, or
// unix:PATH (Twisted 22.4, "Getting Connected with Endpoints"). Ok is false for any other
// kind; the host is empty where it is every interface.
func Endpoint(text string) (port, host, file string, ok bool) {
	parts := strings.Split(strings.ReplaceAll(text, `\:`, "\x00"), ":")
	if len(parts) < 2 || parts[0] != "tcp" && parts[0] != "unix" {
		return "", "", "", false
	}
	places := []string{"port", "interface"} // what stands there without a name
	if parts[0] == "unix" {
		places = []string{"address"}
	}
	said := map[string]string{}
	for i, p := range parts[1:] {
		name, v, named := strings.Cut(strings.ReplaceAll(p, "\x00", ":"), "=")
		if !named && i < len(places) {
			name, v = places[i], name
		}
		said[name] = v
	}
	return said["port"], said["interface"], said["address"], true
}

// endpoint is where an endpoint of Twisted listens.
func endpoint(s Server, text string) Outcome {
	port, host, file, ok := Endpoint(text)
	switch {
	case !ok:
		return notKnown("an endpoint of Twisted")
	case file != "":
		return Outcome{"listens", "unix:" + file, -1, ""}
	}
	out := s.text(port)
	if out.Outcome == "listens" {
		out.Interface = "any"
		if host != "" {
			out.Interface = Interface(host)
		}
	}
	return out
}

// phpSocket reads the addresses of sockets in PHP: tcp://host:port,
// unix:///path (PHP manual, "stream_socket_server"; ReactPHP, Socket). The
// language's own streams take the number a port begins with, none for 0, and
// what is above 65,535 without its higher bits (main/streams/xp_socket.c,
// 8.4; tried 2026-11); the libraries also take a port alone, on loopback.
func phpSocket(addr string, stream bool) Outcome {
	if p, ok := strings.CutPrefix(addr, "unix://"); ok {
		return Outcome{"listens", "unix:" + p, -1, ""}
	}
	for _, scheme := range []string{"tcp://", "tls://", "ssl://", "http://", "websocket://", "text://", "udp://"} {
		addr = strings.TrimPrefix(addr, scheme)
	}
	i := strings.LastIndexByte(addr, ':')
	host, port := addr[:max(i, 0)], addr[i+1:]
	if stream && strings.Contains(host, ":") && !strings.HasPrefix(host, "[") { // the host ends at the first colon
		return exits("the address " + strconv.Quote(addr) + " has colons in its host and no brackets around it")
	}
	if stream && i > 0 && port != "" && host != "*" {
		port = strings.TrimLeft(port, " \t\n\v\f\r") // as atoi reads it
		digits := strings.TrimPrefix(port, "-")
		end := strings.IndexFunc(digits, func(c rune) bool { return c < '0' || c > '9' })
		if end < 0 {
			end = len(digits)
		}
		n, _ := strconv.ParseInt(digits[:end], 10, 64) // 0 for no digits
		if digits != port {
			n = -n
		}
		return Outcome{"listens", Interface(strings.Trim(host, "[]")), int(uint16(n)), ""}
	}
	n, err := strconv.ParseUint(port, 10, 32)
	switch {
	case port == "" && i >= 0, err != nil, n > 65535, i < 0 && stream:
		return exits("the address is " + strconv.Quote(addr))
	case i < 0: // a port alone is on loopback
		return Outcome{"listens", "loopback", int(n), ""}
	case host == "" || host == "*" && stream:
		return exits("the address " + strconv.Quote(addr) + " has no host")
	}
	return Outcome{"listens", Interface(strings.Trim(host, "[]")), int(n), ""}
}

// kestrel is where an ASP.NET Core application listens whose code says nothing
// of it: the variables, the setting, the variables for ports alone.
func (l *Listener) kestrel(s Server, env value.Environ) Outcome {
	for _, name := range []string{"ASPNETCORE_URLS", "DOTNET_URLS"} {
		if v, ok := env.Lookup(name, false); ok && v != "" {
			return kestrelAddress(s, v)
		}
	}
	ports := ""
	for _, name := range []string{"ASPNETCORE_HTTP_PORTS", "DOTNET_HTTP_PORTS"} {
		if v, ok := env.Lookup(name, false); ok && ports == "" {
			ports = v
		}
	}
	if ports != "" && (l.Bind == nil || l.Via != "setting") {
		first, _, _ := strings.Cut(ports, ";")
		return kestrelAddress(s, "http://*:"+first)
	}
	if l.Bind != nil {
		if o := l.Bind.Under(env); o.Kind == value.Str && o.Text != "" {
			return kestrelAddress(s, o.Text)
		} else if o.Kind == value.Unknown {
			return notKnown(o.Text)
		}
	}
	return Outcome{"listens", s.Host, s.Port, ""}
}

// kestrelAddress reads addresses as ASP.NET Core does, several with ; between
// them: the first that needs no certificate counts. A host that is neither an
// address nor localhost stands for any interface (source of BindingAddress and
// AddressBinder, 10.0).
func kestrelAddress(s Server, list string) Outcome {
	first := ""
	for a := range strings.SplitSeq(list, ";") {
		if first == "" || strings.HasPrefix(first, "https:") {
			first = strings.TrimSpace(a)
		}
	}
	scheme, rest, ok := strings.Cut(first, "://")
	if !ok {
		return exits("the address is " + strconv.Quote(first))
	}
	rest, _, _ = strings.Cut(rest, "/")
	if scheme == "https" {
		return notKnown("whether there is a certificate for " + first)
	}
	host, port := rest, "80"
	if i := strings.LastIndexByte(rest, ':'); i >= 0 && !strings.HasSuffix(rest, "]") {
		host, port = rest[:i], rest[i+1:]
	}
	n, err := strconv.ParseUint(port, 10, 16)
	if err != nil {
		return notKnown("what is made of the port " + strconv.Quote(port))
	}
	switch {
	case host == "localhost":
		return Outcome{"listens", "loopback", int(n), ""}
	case !address(strings.Trim(host, "[]")):
		return Outcome{"listens", "any", int(n), ""}
	}
	return Outcome{"listens", Interface(strings.Trim(host, "[]")), int(n), ""}
}

func address(s string) bool {
	_, err := netip.ParseAddr(s)
	return err == nil
}
