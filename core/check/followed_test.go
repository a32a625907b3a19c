package check_test

import "testing"

// followed are programs of the kind that people write, whose port and interface
// go through classes, files, arguments and functions on their way to the call
// that listens. Those that need nothing from outside their language were run,
// and what they did was read from the kernel.
var followed = []struct{ name, tree, want string }{
	{".NET: urls add", `-- Procfile --
web: dotnet g.dll
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var app = builder.Build();
var port = Environment.GetEnvironmentVariable("PORT");
if (!string.IsNullOrEmpty(port)) { app.Urls.Add($"http://*:{port}"); }
app.MapGet("/", () => "x");
await app.RunAsync();
` + manifest6, `PORT=5123 => any 5123
 => loopback 5000`},
	{".NET: startup host", `-- Procfile --
web: dotnet g.dll
-- Program.cs --
public class Program { public static void Main(string[] args) => CreateHostBuilder(args).Build().Run();
 public static IHostBuilder CreateHostBuilder(string[] args) => Host.CreateDefaultBuilder(args).ConfigureWebHostDefaults(web => { web.UseStartup<Startup>().UseUrls("http://0.0.0.0:" + (Environment.GetEnvironmentVariable("PORT") ?? "4195")); }); }
public class Startup { }
` + manifest6, `PORT=5123 => any 5123
 => any 4195`},
	{".NET: kestrel config opt", `-- Procfile --
web: dotnet g.dll
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
int port = builder.Configuration.GetValue<int>("PORT", 4196);
builder.WebHost.ConfigureKestrel(options => options.Listen(System.Net.IPAddress.Loopback, port));
builder.Build().Run();
` + manifest6, `PORT=5123 => loopback 5123
 => loopback 4196`},
	{"Deno: deno oak", `-- Procfile --
web: deno task start
-- deno.json --
{ "imports": { "@oak/oak": "jsr:@oak/oak@17" }, "tasks": { "start": "deno run -A main.ts" } }
-- main.ts --
 import { Application } from "@oak/oak";
const app = new Application();
const port = parseInt(Deno.env.get("PORT") || "4121");
await app.listen({ port, hostname: "0.0.0.0" });
`, `PORT=5123 => any 5123
 => any 4121`},
	{"Elixir: plug router", `-- Procfile --
web: mix run --no-halt
-- mix.exs --
defmodule G.MixProject do
  use Mix.Project
  def project, do: [app: :g, version: "0.1.0", elixir: "~> 1.18", deps: [{:bandit, "~> 1.5"}]]
  def application, do: [mod: {G.Application, []}]
end
-- config/config.exs --
import Config
config :g, port: 4197
-- config/runtime.exs --
import Config
if port = System.get_env("PORT") do
  config :g, port: String.to_integer(port)
end
-- lib/g/application.ex --
defmodule G.Application do
  use Application
  @impl true
  def start(_type, _args) do
    children = [{Bandit, plug: G.Router, scheme: :http, port: Application.fetch_env!(:g, :port)}]
    Supervisor.start_link(children, strategy: :one_for_one, name: G.Supervisor)
  end
end
`, `PORT=5123 => any 5123
 => any 4197`},
	{"Go: a structure without a name", `-- Procfile --
web: go run .
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("net/http"; "github.com/alecthomas/kong")
var cli struct { Addr string ` + "`" + `default:":8195" env:"DOME_ADDR" help:"address"` + "`" + ` }
func main() { kong.Parse(&cli); http.ListenAndServe(cli.Addr, nil) }
`, `DOME_ADDR=127.0.0.1:5123 => loopback 5123
 => any 8195`},
	{"Go: a file of viper", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("net/http"; "github.com/spf13/viper")
func main() { viper.SetConfigName("config"); viper.SetConfigType("yaml"); viper.AddConfigPath("."); viper.SetDefault("server.addr", ":1"); if err := viper.ReadInConfig(); err != nil { panic(err) }; http.ListenAndServe(viper.GetString("server.addr"), nil) }
-- config.yaml --
server:
  addr: "0.0.0.0:8198"
`, " => any 8198"},
	{"Go: options", `-- Procfile --
web: go run .
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("log"; "net"; "net/http"; "os"; "strconv")
type Server struct { addr string; mux *http.ServeMux }
func NewServer(host string, port int) *Server { return &Server{addr: net.JoinHostPort(host, strconv.Itoa(port)), mux: http.NewServeMux()} }
func (s *Server) Run() error { return http.ListenAndServe(s.addr, s.mux) }
func mustInt(s string, d int) int { n, err := strconv.Atoi(s); if err != nil { return d }; return n }
func main() { s := NewServer("0.0.0.0", mustInt(os.Getenv("PORT"), 4180)); log.Fatal(s.Run()) }
`, `PORT=5123 => any 5123
 => any 4180`},
	{"Go: listen serve", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("fmt"; "net"; "net/http"; "os")
func run() error {
 addr := fmt.Sprintf("%s:%s", get("HOST", "localhost"), get("PORT", "4181"))
 ln, err := net.Listen("tcp", addr)
 if err != nil { return fmt.Errorf("listen: %w", err) }
 return http.Serve(ln, nil)
}
func get(key, def string) string { if v := os.Getenv(key); v != "" { return v }; return def }
func main() { if err := run(); err != nil { fmt.Fprintln(os.Stderr, err); os.Exit(1) } }
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4181`},
	{"Go: cobra", `-- Procfile --
web: ./g -p 4183 --host 0.0.0.0
-- go.mod --
module g

go 1.25

require github.com/spf13/cobra v1.0.0
-- main.go --
package main
 import ("fmt"; "net/http"; "github.com/spf13/cobra")
func newRoot() *cobra.Command {
 var port int
 var host string
 cmd := &cobra.Command{Use: "gate", RunE: func(cmd *cobra.Command, args []string) error { return http.ListenAndServe(fmt.Sprintf("%s:%d", host, port), nil) }}
 cmd.Flags().IntVarP(&port, "port", "p", 4182, "port")
 cmd.Flags().StringVar(&host, "host", "127.0.0.1", "host")
 return cmd
}
func main() { newRoot().Execute() }
`, " => any 4183"},
	{"Go: json conf", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("encoding/json"; "log"; "net/http"; "os")
type config struct { Listen string ` + "`" + `json:"listen"` + "`" + ` }
func load(path string) (*config, error) { f, err := os.Open(path); if err != nil { return nil, err }; defer f.Close(); var c config; if err := json.NewDecoder(f).Decode(&c); err != nil { return nil, err }; return &c, nil }
func main() { c, err := load("config.json"); if err != nil { log.Fatal(err) }; log.Fatal(http.ListenAndServe(c.Listen, nil)) }
-- config.json --
{"listen": "127.0.0.1:4184"}
`, " => loopback 4184"},
	{"Go: echo start", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require github.com/labstack/echo/v4 v1.0.0
-- main.go --
package main
 import ("os"; "github.com/labstack/echo/v4")
const defaultPort = "4185"
func main() { e := echo.New(); e.HideBanner = true; port, ok := os.LookupEnv("PORT"); if !ok { port = defaultPort }; e.Logger.Fatal(e.Start("0.0.0.0:" + port)) }
`, `PORT=5123 => any 5123
 => any 4185`},
	{"Go: grpc", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require google.golang.org/grpc v1.0.0
-- main.go --
package main
 import ("net"; "os"; "google.golang.org/grpc")
func main() { lis, _ := net.Listen("tcp", ":"+os.Getenv("GRPC_PORT")); s := grpc.NewServer(); s.Serve(lis) }
`, `GRPC_PORT=5123 => any 5123
 => any 0`},
	{"Go: switch", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25

require github.com/x/y v1.0.0
-- main.go --
package main
 import ("net/http"; "os")
func addr() string { switch env := os.Getenv("APP_ENV"); env { case "production", "staging": return ":" + os.Getenv("PORT"); default: return "127.0.0.1:4186" } }
func main() { http.ListenAndServe(addr(), nil) }
`, ` => loopback 4186
APP_ENV=staging PORT=5123 => any 5123`},
	{"Go: const iota", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os"; "strconv")
const (base = 5500; offset = 1)
func main() { p := base + offset; if v, err := strconv.Atoi(os.Getenv("PORT")); err == nil { p = v }; http.ListenAndServe(":"+strconv.Itoa(p), nil) }
`, `PORT=5123 => any 5123
 => any 5501
PORT=abc => any 5501`},
	{"Go: struct method", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("fmt"; "net/http"; "os")
type Conf struct { Host, Port string }
func (c Conf) Addr() string { return fmt.Sprintf("%s:%s", c.Host, c.Port) }
func FromEnv() (c Conf) { c.Host, c.Port = "0.0.0.0", "5502"; if p := os.Getenv("PORT"); p != "" { c.Port = p }; return }
func main() { c := FromEnv(); http.ListenAndServe(c.Addr(), nil) }
`, `PORT=5123 => any 5123
 => any 5502`},
	{"Go: options again", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os")
type opt func(*http.Server)
func withAddr(a string) opt { return func(s *http.Server) { s.Addr = a } }
func build(opts ...opt) *http.Server { s := &http.Server{Addr: ":1"}; for _, o := range opts { o(s) }; return s }
func main() { build(withAddr(":" + os.Getenv("PORT"))).ListenAndServe() }
`, "PORT=5123 => any 5123"},
	{"Go: embed json", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("embed"; "encoding/json"; "net/http")
//go:embed conf.json
var raw []byte
var _ embed.FS
func main() { var c struct{ Addr string }; json.Unmarshal(raw, &c); http.ListenAndServe(c.Addr, nil) }
-- conf.json --
{"Addr":"127.0.0.1:5503"}
`, " => loopback 5503"},
	{"Go: cmp.Or", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("cmp"; "net"; "net/http"; "os")
func main() { addr := net.JoinHostPort(cmp.Or(os.Getenv("HOST"), "127.0.0.1"), cmp.Or(os.Getenv("PORT"), "5504")); http.ListenAndServe(addr, nil) }
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 5504`},
	{"Go: map lookup", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os")
var addrs = map[string]string{"prod": "0.0.0.0:5505", "dev": "localhost:5506"}
func main() { a, ok := addrs[os.Getenv("MODE")]; if !ok { a = addrs["dev"] }; http.ListenAndServe(a, nil) }
`, ` => loopback 5506
MODE=prod => any 5505`},
	{"Go: goroutine errgroup", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("log"; "net/http"; "os")
func main() { errs := make(chan error, 1); go func() { errs <- http.ListenAndServe(":"+envOr("PORT", "5507"), http.DefaultServeMux) }(); log.Fatal(<-errs) }
func envOr(k, d string) string { v, ok := os.LookupEnv(k); if !ok || v == "" { return d }; return v }
`, `PORT=5123 => any 5123
PORT= => any 5507`},
	{"Go: listenconfig", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("context"; "net"; "net/http"; "os")
func main() { var lc net.ListenConfig; ln, err := lc.Listen(context.Background(), "tcp", ":"+os.Getenv("PORT")); if err != nil { panic(err) }; http.Serve(ln, nil) }
`, "PORT=5123 => any 5123"},
	{"Go: tls two", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os")
func main() { if c, k := os.Getenv("CERT"), os.Getenv("KEY"); c != "" && k != "" { http.ListenAndServeTLS(":8443", c, k, nil) } else { http.ListenAndServe(":"+os.Getenv("PORT"), nil) } }
`, "PORT=5123 => any 5123"},
	{"Go: flag env default", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("flag"; "net/http"; "os")
func main() { def := ":5508"; if p := os.Getenv("PORT"); p != "" { def = ":" + p }; addr := flag.String("addr", def, "address"); flag.Parse(); http.ListenAndServe(*addr, nil) }
`, `PORT=5123 => any 5123
 => any 5508`},
	{"Go: netip", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net"; "net/http"; "os"; "strconv")
func main() { p, _ := strconv.Atoi(os.Getenv("PORT")); ln, _ := net.ListenTCP("tcp", &net.TCPAddr{IP: net.IPv4(127, 0, 0, 1), Port: p}); http.Serve(ln, nil) }
`, "PORT=5123 => loopback 5123"},
	{"Go: three packages, an error on the way", `-- Procfile --
web: ./gate
-- go.mod --
module g

go 1.25
-- cmd/gate/main.go --
package main
 import (
	"context"
	"log"
	"g/internal/app"
)
func main() { if err := app.Run(context.Background()); err != nil { log.Fatal(err) } }
-- internal/app/app.go --
package app
 import (
	"context"
	"net/http"
	"time"
	"g/internal/config"
)
type App struct { cfg *config.Config; srv *http.Server }
func New(cfg *config.Config) *App { a := &App{cfg: cfg}; a.srv = &http.Server{Addr: cfg.HTTP.Address(), ReadHeaderTimeout: time.Second}; return a }
func (a *App) Start() error { return a.srv.ListenAndServe() }
func Run(ctx context.Context) error {
	cfg, err := config.Load()
	if err != nil { return err }
	return New(cfg).Start()
}
-- internal/config/config.go --
package config
 import (
	"errors"
	"net"
	"os"
	"strconv"
)
type HTTP struct { Host string; Port int }
func (h HTTP) Address() string { return net.JoinHostPort(h.Host, strconv.Itoa(h.Port)) }
type Config struct { HTTP HTTP }
func Load() (*Config, error) {
	cfg := &Config{HTTP: HTTP{Host: "0.0.0.0", Port: 6501}}
	if v := os.Getenv("PORT"); v != "" {
		p, err := strconv.Atoi(v)
		if err != nil { return nil, errors.New("PORT: " + err.Error()) }
		cfg.HTTP.Port = p
	}
	if v, ok := os.LookupEnv("HOST"); ok { cfg.HTTP.Host = v }
	return cfg, nil
}
`, `PORT=5123 => any 5123
 => any 6501
HOST=127.0.0.1 => loopback 6501
PORT=abc => exits`},
	{"Go: an address, or a port alone", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os"; "strings")
func main() { addr := os.Getenv("LISTEN_ADDR"); if addr == "" { addr = "127.0.0.1:6502" } else if !strings.Contains(addr, ":") { addr = ":" + addr }; http.ListenAndServe(addr, nil) }
`, ` => loopback 6502
LISTEN_ADDR=5123 => any 5123
LISTEN_ADDR=0.0.0.0:5124 => any 5124`},
	{"Go: new of a server", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os"; "time")
func main() { mux := http.NewServeMux(); s := new(http.Server); s.Addr = ":" + getenv("PORT", "6503"); s.Handler = mux; s.ReadTimeout = time.Second; if err := s.ListenAndServe(); err != http.ErrServerClosed { panic(err) } }
func getenv(k string, d ...string) string { if v := os.Getenv(k); v != "" { return v }; if len(d) > 0 { return d[0] }; return "" }
`, `PORT=5123 => any 5123
 => any 6503`},
	{"Go: options that may fail", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("errors"; "net/http"; "os"; "strconv")
type Option func(*Server) error
type Server struct { host string; port int }
func WithPort(p string) Option { return func(s *Server) error { n, err := strconv.Atoi(p); if err != nil { return err }; s.port = n; return nil } }
func New(opts ...Option) (*Server, error) { s := &Server{host: "127.0.0.1", port: 6504}; for _, opt := range opts { if err := opt(s); err != nil { return nil, err } }; if s.port == 0 { return nil, errors.New("no port") }; return s, nil }
func (s *Server) Serve() error { return http.ListenAndServe(s.host+":"+strconv.Itoa(s.port), nil) }
func main() { s, err := New(WithPort(os.Getenv("PORT"))); if err != nil { panic(err) }; s.Serve() }
`, "PORT=5123 => loopback 5123"},
	{"Go: flags put into a field", `-- Procfile --
web: ./g -addr 127.0.0.1:6506
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("flag"; "log"; "net/http"; "os")
type config struct { addr string; debug bool }
func main() { var cfg config; flag.StringVar(&cfg.addr, "addr", envOr("ADDR", ":6505"), "addr"); flag.BoolVar(&cfg.debug, "debug", false, ""); flag.Parse(); log.Fatal(serve(&cfg)) }
func serve(c *config) error { return http.ListenAndServe(c.addr, nil) }
func envOr(k, d string) string { if v, ok := os.LookupEnv(k); ok { return v }; return d }
`, " => loopback 6506"},
	{"Go: in a goroutine, waited for", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net"; "net/http"; "os"; "sync")
func main() { var wg sync.WaitGroup; wg.Add(1); go func() { defer wg.Done(); l, err := net.Listen("tcp4", net.JoinHostPort("", os.Getenv("PORT"))); if err != nil { panic(err) }; defer l.Close(); http.Serve(l, nil) }(); wg.Wait() }
`, "PORT=5123 => any 5123"},
	{"Go: a graceful server", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main

 import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"os"
	"os/signal"
	"syscall"
	"time"
)
type config struct {
	host string
	port string
}
func loadConfig() config {
	c := config{host: os.Getenv("HOST"), port: os.Getenv("PORT")}
	if c.port == "" {
		c.port = "7501"
	}
	return c
}
func main() {
	logger := slog.New(slog.NewTextHandler(os.Stdout, nil))
	cfg := loadConfig()
	srv := &http.Server{Addr: cfg.host + ":" + cfg.port, Handler: routes(logger)}
	go func() {
		logger.Info("listening", "addr", srv.Addr)
		if err := srv.ListenAndServe(); err != nil && !errors.Is(err, http.ErrServerClosed) {
			logger.Error("serve", "err", err)
			os.Exit(1)
		}
	}()
	ctx, stop := signal.NotifyContext(context.Background(), syscall.SIGTERM)
	defer stop()
	<-ctx.Done()
	shutdown, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	srv.Shutdown(shutdown)
}
func routes(l *slog.Logger) http.Handler { return http.NewServeMux() }
`, `PORT=5123 => any 5123
 => any 7501
HOST=127.0.0.1 => loopback 7501`},
	{"Go: a field of a structure inside", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("encoding/json"; "net/http"; "os")
type Config struct { Server struct { Host string ` + "`" + `json:"host"` + "`" + `; Port string ` + "`" + `json:"port"` + "`" + ` } ` + "`" + `json:"server"` + "`" + ` }
func main() { b, err := os.ReadFile("config.json"); if err != nil { panic(err) }; var c Config; if err := json.Unmarshal(b, &c); err != nil { panic(err) }; if p := os.Getenv("PORT"); p != "" { c.Server.Port = p }; http.ListenAndServe(c.Server.Host+":"+c.Server.Port, nil) }
-- config.json --
{"server":{"host":"127.0.0.1","port":"7503"}}
`, `PORT=5123 => loopback 5123
 => loopback 7503`},
	{"Go: init changes a variable", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os")
var (host = getenv("HOST", "0.0.0.0"); port = getenv("PORT", "7504"))
func init() { if os.Getenv("LOCAL") == "1" { host = "127.0.0.1" } }
func getenv(k, d string) string { if v := os.Getenv(k); v != "" { return v }; return d }
func main() { http.ListenAndServe(host+":"+port, nil) }
`, `PORT=5123 => any 5123
LOCAL=1 => loopback 7504`},
	{"Go: an argument of the program", `-- Procfile --
web: ./g 7505
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("bufio"; "net"; "os")
func main() { ln, err := net.Listen("tcp", net.JoinHostPort(os.Getenv("HOST"), os.Args[1])); if err != nil { os.Exit(1) }; for { c, err := ln.Accept(); if err != nil { continue }; go func(c net.Conn) { defer c.Close(); bufio.NewReader(c).ReadString(10) }(c) } }
`, ` => any 7505
HOST=127.0.0.1 => loopback 7505`},
	{"Go: a shadowed name", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("fmt"; "log"; "net/http"; "os")
func handler(w http.ResponseWriter, r *http.Request) { fmt.Fprint(w, "x") }
func main() {
	http.HandleFunc("/", handler)
	port := "8501"
	if fromEnv := os.Getenv("PORT"); fromEnv != "" {
		port = fromEnv
	}
	log.Printf("listening on %s", port)
	log.Fatal(http.ListenAndServe(fmt.Sprintf(":%v", port), nil))
}
`, `PORT=5123 => any 5123
 => any 8501`},
	{"Go: a flag with the variable as default", `-- Procfile --
web: ./g -bind=0.0.0.0
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("flag"; "net/http"; "strconv"; "os")
func main() {
	port := flag.Int("port", envInt("PORT", 8502), "port")
	bind := flag.String("bind", "127.0.0.1", "address")
	flag.Parse()
	server := &http.Server{}
	server.Addr = *bind + ":" + strconv.Itoa(*port)
	server.ListenAndServe()
}
func envInt(name string, def int) int {
	if v, err := strconv.Atoi(os.Getenv(name)); err == nil {
		return v
	}
	return def
}
`, `PORT=5123 => any 5123
 => any 8502`},
	{"Go: a listener with its own address", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net"; "net/http"; "os"; "time")
func main() {
	addr := net.JoinHostPort("localhost", "8504")
	if v := os.Getenv("ADDR"); v != "" { addr = v }
	srv := http.Server{Handler: http.NotFoundHandler(), WriteTimeout: time.Second}
	lis, err := net.Listen("tcp", addr)
	if err != nil { panic(err) }
	panic(srv.Serve(lis))
}
`, ` => loopback 8504
ADDR=:5123 => any 5123`},
	{"Go: one of two values behind an interface", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os")
type Listener interface { Listen() error }
type web struct{ addr string }
func (w web) Listen() error { return http.ListenAndServe(w.addr, nil) }
func pick() Listener { if p := os.Getenv("PORT"); p != "" { return web{":" + p} }; return web{"127.0.0.1:9501"} }
func main() { pick().Listen() }
`, `PORT=5123 => any 5123
 => loopback 9501`},
	{"Go: the first of a list", `-- Procfile --
web: ./g
-- go.mod --
module g

go 1.25
-- main.go --
package main
 import ("net/http"; "os"; "strings")
func main() { hosts := strings.Split(os.Getenv("BIND"), ","); addr := "0.0.0.0:9502"; if len(hosts) > 0 && hosts[0] != "" { addr = hosts[0] }; http.ListenAndServe(addr, nil) }
`, ` => any 9502
BIND=127.0.0.1:5123 => loopback 5123`},
	{"Java: a verticle", `-- Procfile --
web: java -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.vertx</groupId><artifactId>vertx-core</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;
import io.vertx.core.*;
public class Main extends AbstractVerticle {
 public void start(Promise<Void> p) { int port = Integer.parseInt(System.getenv().getOrDefault("PORT","8080")); vertx.createHttpServer().requestHandler(r -> r.response().end("x")).listen(port, "0.0.0.0"); }
 public static void main(String[] a) { Vertx.vertx().deployVerticle(new Main()); } }
`, `PORT=5123 => any 5123
 => any 8080`},
	{"Java: a property of the machine", `-- Procfile --
web: java -Dport=8088 -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.undertow</groupId><artifactId>undertow-core</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;
import io.undertow.Undertow;
public class Main { public static void main(String[] a) { Undertow.builder().addHttpListener(Integer.getInteger("port", 8080), "localhost").build().start(); } }
`, "PORT=5123 => loopback 8088"},
	{"Java: Tomcat inside", `-- Procfile --
web: java -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>org.apache.tomcat.embed</groupId><artifactId>tomcat-embed-core</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;
import org.apache.catalina.startup.Tomcat;
public class Main { public static void main(String[] a) throws Exception { Tomcat t = new Tomcat(); t.setPort(Integer.parseInt(System.getenv().getOrDefault("PORT","8080"))); t.getConnector(); t.start(); t.getServer().await(); } }
`, `PORT=5123 => any 5123
 => any 8080`},
	{"Java: Spark", `-- Procfile --
web: java -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>com.sparkjava</groupId><artifactId>spark-core</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;
import static spark.Spark.*;
public class Main { public static void main(String[] a) { port(Integer.parseInt(System.getenv("PORT"))); get("/", (q, r) -> "x"); } }
`, "PORT=5123 => any 5123"},
	{"Java: placeholders in placeholders", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication.run(Main.class, a); } }
-- src/main/resources/application.properties --
dome.port=${PORT:8082}
server.port=${dome.port}
` + manifest1, `PORT=5123 => any 5123
 => any 8082`},
	{"Java: several documents", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication.run(Main.class, a); } }
-- src/main/resources/application.yml --
server:
  port: 8083
---
spring:
  config:
    activate:
      on-profile: prod
server:
  port: 8084
` + manifest1, ` => any 8083
SPRING_PROFILES_ACTIVE=prod => any 8084`},
	{"Java: a file for a profile", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication.run(Main.class, a); } }
-- src/main/resources/application.yml --
server:
  port: 8085
-- src/main/resources/application-prod.yml --
server:
  port: ${PORT}
` + manifest1, `SPRING_PROFILES_ACTIVE=prod PORT=5123 => any 5123
 => any 8085`},
	{"Java: profiles of Quarkus in YAML", `-- Procfile --
web: java -jar target/quarkus-app/quarkus-run.jar
-- src/main/java/g/R.java --
package g;
@jakarta.ws.rs.Path("/")
public class R {}
-- src/main/resources/application.yml --
quarkus:
  http:
    port: 8088
"%prod":
  quarkus:
    http:
      port: 8089
` + manifest2, " => any 8089"},
	{"Java: settings of Helidon", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import io.helidon.config.Config;
import io.helidon.webserver.WebServer;
public class Main { public static void main(String[] a) { WebServer.builder().config(Config.create().get("server")).build().start(); } }
-- src/main/resources/application.yaml --
server:
  port: 8090
  host: 0.0.0.0
` + manifest3, " => any 8090"},
	{"Java: Helidon in code", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import io.helidon.webserver.WebServer;
public class Main { public static void main(String[] a) { WebServer.builder().port(Integer.parseInt(System.getenv().getOrDefault("PORT", "8091"))).build().start(); } }
` + manifest3, ` => any 8091
PORT=5123 => any 5123`},
	{"Java: defaults of the program", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
import java.util.Collections;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication app = new SpringApplication(Main.class); app.setDefaultProperties(Collections.singletonMap("server.port", System.getenv().getOrDefault("PORT", "8181"))); app.run(a); } }
` + manifest1, `PORT=5123 => any 5123
 => any 8181`},
	{"Java: Optional", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Optional;
public class Main { private static final int DEFAULT_PORT = 8184;
 public static void main(String[] args) throws Exception { int port = Optional.ofNullable(System.getenv("PORT")).map(Integer::parseInt).orElse(DEFAULT_PORT); HttpServer.create(new InetSocketAddress(port), 0).start(); } }
` + manifest4, `PORT=5123 => any 5123
 => any 8184`},
	{"Java: properties on the class path", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.io.*;
import java.net.*;
import java.util.Properties;
public class Main { public static void main(String[] args) throws Exception { Properties p = new Properties(); try (InputStream in = Main.class.getResourceAsStream("/app.properties")) { p.load(in); } ServerSocket s = new ServerSocket(Integer.parseInt(p.getProperty("port", "1"))); s.accept(); } }
-- src/main/resources/app.properties --
port=8185
` + manifest4, " => any 8185"},
	{"Java: spring profiles include", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication.run(Main.class, a); } }
-- src/main/resources/application.properties --
spring.profiles.active=${APP_PROFILE:local}
server.port=4172
-- src/main/resources/application-local.properties --
server.port=4173
server.address=127.0.0.1
` + manifest1, ` => loopback 4173
APP_PROFILE=prod => any 4172`},
	{"Java: record", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Map;
public final class Main {
  record Config(String host, int port) {
    static Config from(Map<String, String> env) {
      return new Config(env.getOrDefault("HOST", "0.0.0.0"), Integer.parseInt(env.getOrDefault("PORT", "4174")));
    }
  }
  public static void main(String[] args) throws Exception {
    var config = Config.from(System.getenv());
    var server = HttpServer.create(new InetSocketAddress(config.host(), config.port()), 0);
    server.start();
  }
}
` + manifest4, `PORT=5123 => any 5123
HOST=localhost => loopback 4174`},
	{"Java: try parse", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;

import java.net.*;
public class Main {
  static int port() { try { return Integer.parseInt(System.getenv("PORT")); } catch (NumberFormatException e) { return 4175; } }
  public static void main(String[] args) throws Exception {
    try (ServerSocket s = new ServerSocket()) { s.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port())); s.accept(); }
  }
}
` + manifest4, `PORT=5123 => loopback 5123
 => loopback 4175
PORT=x => loopback 4175`},
	{"Java: javalin lambda", `-- Procfile --
web: java -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.javalin</groupId><artifactId>javalin</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;

import io.javalin.Javalin;
public class Main {
  public static void main(String[] args) {
    Javalin app = Javalin.create(config -> { config.jetty.defaultHost = "127.0.0.1"; config.jetty.defaultPort = 4177; });
    app.start();
  }
}
`, " => loopback 4177"},
	{"Java: vertx deploy", `-- Procfile --
web: java -jar target/g.jar
-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.vertx</groupId><artifactId>vertx-web</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
-- src/main/java/g/Main.java --
package g;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServerOptions;
public class Main {
  public static void main(String[] args) {
    Vertx vertx = Vertx.vertx();
    HttpServerOptions options = new HttpServerOptions().setPort(Integer.parseInt(System.getenv().getOrDefault("PORT", "4178"))).setHost("0.0.0.0");
    vertx.createHttpServer(options).requestHandler(r -> r.response().end("x")).listen();
  }
}
`, `PORT=5123 => any 5123
 => any 4178`},
	{"Java: quarkus env", `-- Procfile --
web: java -Dquarkus.http.host=127.0.0.1 -jar target/quarkus-app/quarkus-run.jar
-- src/main/java/g/R.java --
package g;
@jakarta.ws.rs.Path("/")
public class R {}
-- src/main/resources/application.properties --
quarkus.http.host=0.0.0.0
quarkus.http.port=${PORT:4179}
` + manifest2, `PORT=5123 => loopback 5123
 => loopback 4179`},
	{"Java: args env", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] args) throws Exception { String p = args.length > 0 ? args[0] : System.getenv("PORT"); int port = p != null ? Integer.parseInt(p) : 5401; HttpServer.create(new InetSocketAddress(port), 0).start(); }
}
` + manifest4, `PORT=5123 => any 5123
 => any 5401
PORT=abc => exits`},
	{"Java: optional chain", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
static final Map<String, String> ENV = System.getenv();
 static int intOf(String k, int d) { return Optional.ofNullable(ENV.get(k)).filter(s -> !s.isBlank()).map(Integer::valueOf).orElse(d); }
 public static void main(String[] a) throws Exception { var s = HttpServer.create(new InetSocketAddress("0.0.0.0", intOf("PORT", 5402)), 0); s.createContext("/", x -> x.close()); s.start(); }
}
` + manifest4, `PORT=5123 => any 5123
 => any 5402
PORT= => any 5402`},
	{"Java: props file", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] a) throws Exception { Properties p = new Properties(); try (var in = new FileInputStream("conf.properties")) { p.load(in); } int port = Integer.parseInt(System.getProperty("port", p.getProperty("port", "1"))); new ServerSocket(port, 50, InetAddress.getByName(p.getProperty("host"))).accept(); }
}
-- conf.properties --
host=127.0.0.1
port=5403
` + manifest4, " => loopback 5403"},
	{"Java: enum config", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
enum Mode { DEV("127.0.0.1", 5404), PROD("0.0.0.0", 5405); final String host; final int port; Mode(String h, int p) { host = h; port = p; } }
 public static void main(String[] a) throws Exception { Mode m = "prod".equals(System.getenv("MODE")) ? Mode.PROD : Mode.DEV; HttpServer.create(new InetSocketAddress(m.host, m.port), 0).start(); }
}
` + manifest4, ` => loopback 5404
MODE=prod => any 5405`},
	{"Java: switch expr", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] a) throws Exception { String env = Objects.requireNonNullElse(System.getenv("APP_ENV"), "dev"); int port = switch (env) { case "prod", "staging" -> Integer.parseInt(System.getenv("PORT")); default -> 5406; }; try (var s = new ServerSocket(port)) { s.accept(); } }
}
` + manifest4, ` => any 5406
APP_ENV=staging PORT=5123 => any 5123`},
	{"Java: builder", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
static class Server { private String host = "localhost"; private int port = 5407; Server host(String h) { this.host = h; return this; } Server port(int p) { this.port = p; return this; } void start() throws IOException { HttpServer.create(new InetSocketAddress(host, port), 0).start(); } }
 public static void main(String[] a) throws Exception { new Server().host("0.0.0.0").port(Integer.parseInt(System.getenv().getOrDefault("PORT", "5408"))).start(); }
}
` + manifest4, `PORT=5123 => any 5123
 => any 5408`},
	{"Java: prop D", `-- Procfile --
web: java -Dapp.port=$PORT -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] a) throws Exception { int port = Integer.getInteger("app.port", 5409); HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0).start(); }
}
` + manifest4, "PORT=5123 => loopback 5123"},
	{"Java: a class of settings with getters", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] args) throws Exception { Config c = Config.load(); HttpServer s = HttpServer.create(new InetSocketAddress(c.getHost(), c.getPort()), 0); s.setExecutor(Executors.newVirtualThreadPerTaskExecutor()); s.start(); }
}
-- src/main/java/g/Config.java --
package g;
public class Config {
  private final String host;
  private final int port;
  private Config(String host, int port) { this.host = host; this.port = port; }
  public static Config load() { String p = System.getenv("PORT"); return new Config(env("HOST", "0.0.0.0"), p == null || p.isEmpty() ? 6401 : Integer.parseInt(p)); }
  private static String env(String k, String d) { String v = System.getenv(k); return v == null ? d : v; }
  public String getHost() { return host; }
  public int getPort() { return port; }
}
` + manifest4, `PORT=5123 => any 5123
PORT= => any 6401
HOST=127.0.0.1 => loopback 6401`},
	{"Java: a property, a variable, a number", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import com.sun.net.httpserver.*;
public class Main {
private static final int PORT = Integer.parseInt(System.getProperty("server.port", System.getenv().getOrDefault("PORT", "6402")));
 public static void main(String[] a) throws IOException { ServerSocket ss = new ServerSocket(); ss.bind(new InetSocketAddress("127.0.0.1", PORT)); while (true) ss.accept().close(); }
}
` + manifest4, `PORT=5123 => loopback 5123
 => loopback 6402`},
	{"Java: a map that the environment fills", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] args) throws Exception { var env = new HashMap<>(Map.of("PORT", "6406", "HOST", "127.0.0.1")); env.putAll(System.getenv()); HttpServer.create(new InetSocketAddress(env.get("HOST"), Integer.parseInt(env.get("PORT"))), 0).start(); }
}
` + manifest4, `PORT=5123 => loopback 5123
 => loopback 6406`},
	{"Java: a bundle of resources", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import com.sun.net.httpserver.HttpServer;
public class Main { public static void main(String[] a) throws Exception { var rb = java.util.ResourceBundle.getBundle("gate"); HttpServer.create(new InetSocketAddress(Integer.parseInt(rb.getString("port"))), 0).start(); } }
-- src/main/resources/gate.properties --
port=6407
` + manifest4, " => any 6407"},
	{"Java: an object with a port, an end on a mistake", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import java.util.function.*;
import com.sun.net.httpserver.*;
public class Main {
private final int port;
 private final String host;
 public Main(String host, int port) { this.host = host; this.port = port; }
 public void run() throws IOException { var server = HttpServer.create(new InetSocketAddress(host, port), 0); server.createContext("/", this::handle); server.start(); }
 private void handle(HttpExchange x) throws IOException { x.close(); }
 public static void main(String[] args) throws IOException { int port = 7401; String env = System.getenv("PORT"); if (env != null) { try { port = Integer.parseInt(env); } catch (NumberFormatException e) { System.err.println("bad port"); System.exit(2); } } new Main("0.0.0.0", port).run(); }
}
` + manifest4, `PORT=5123 => any 5123
 => any 7401
PORT=abc => exits`},
	{"Java: a generic helper", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import java.util.function.*;
import com.sun.net.httpserver.*;
public class Main {
static <T> T env(String name, T fallback, Function<String, T> parse) { String v = System.getenv(name); return v == null || v.isBlank() ? fallback : parse.apply(v); }
 public static void main(String[] args) throws Exception { int port = env("PORT", 7402, Integer::parseInt); String host = env("HOST", "127.0.0.1", Function.identity()); HttpServer.create(new InetSocketAddress(host, port), 0).start(); }
}
` + manifest4, `PORT=5123 => loopback 5123
 => loopback 7402`},
	{"Java: one of two addresses", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import java.util.concurrent.*;
import java.util.function.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] a) throws Exception { SocketAddress addr = System.getenv("PUBLIC") == null ? new InetSocketAddress("localhost", 7404) : new InetSocketAddress(Integer.parseInt(System.getenv("PORT"))); var ch = java.nio.channels.ServerSocketChannel.open(); ch.bind(addr); ch.accept(); }
}
` + manifest4, ` => loopback 7404
PUBLIC=1 PORT=5123 => any 5123`},
	{"Java: bound later", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
private static String env(String key, String def) { return System.getenv(key) != null ? System.getenv(key) : def; }
 public static void main(String[] args) throws Exception { final int port = Integer.parseInt(env("PORT", "8401")); final HttpServer server = HttpServer.create(); server.bind(new InetSocketAddress(env("HOST", "0.0.0.0"), port), 0); server.start(); }
}
` + manifest4, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 8401`},
	{"Java: profiles that the file chooses", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import org.springframework.boot.SpringApplication;
@org.springframework.boot.autoconfigure.SpringBootApplication
public class Main { public static void main(String[] a) { SpringApplication.run(Main.class, a); } }
-- src/main/resources/application.yml --
spring:
  profiles:
    active: dev
---
spring:
  config:
    activate:
      on-profile: dev
server:
  port: 8404
  address: localhost
---
spring:
  config:
    activate:
      on-profile: prod
server:
  port: ${PORT}
` + manifest1, ` => loopback 8404
SPRING_PROFILES_ACTIVE=prod PORT=5123 => any 5123`},
	{"Java: an abstract class", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
abstract static class Server { protected abstract int port(); protected String host() { return "0.0.0.0"; } void start() throws IOException { HttpServer.create(new InetSocketAddress(host(), port()), 0).start(); } }
 static class Gate extends Server { @Override protected int port() { String p = System.getenv("PORT"); return p == null ? 9401 : Integer.parseInt(p); } @Override protected String host() { return "127.0.0.1"; } }
 public static void main(String[] a) throws Exception { new Gate().start(); }
}
` + manifest4, `PORT=5123 => loopback 5123
 => loopback 9401`},
	{"Java: a map that is put to", `-- Procfile --
web: java -jar target/g.jar
-- src/main/java/g/Main.java --
package g;
import java.net.*;
import java.io.*;
import java.util.*;
import com.sun.net.httpserver.*;
public class Main {
public static void main(String[] args) throws Exception { Map<String, String> o = new HashMap<>(); o.put("port", "9402"); String p = System.getenv("PORT"); if (p != null) { o.put("port", p); } new ServerSocket(Integer.parseInt(o.get("port"))).accept(); }
}
` + manifest4, `PORT=5123 => any 5123
 => any 9402`},
	{"Kotlin: when and lazy", `-- Procfile --
web: java -jar build/libs/g-all.jar
-- settings.gradle.kts --
rootProject.name = "g"
-- src/main/kotlin/App.kt --
import java.net.ServerSocket
object Settings {
    const val DEFAULT = 8093
    val port: Int by lazy { System.getenv("PORT")?.toIntOrNull() ?: DEFAULT }
    val host get() = when (System.getenv("APP_ENV")) { "production" -> "0.0.0.0"; else -> "127.0.0.1" }
}
fun main(args: Array<String>) {
    ServerSocket(Settings.port, 50, java.net.InetAddress.getByName(Settings.host)).accept()
}
` + manifest5, `PORT=5123 => loopback 5123
APP_ENV=production => any 8093`},
	{"Kotlin: http4k", `-- Procfile --
web: java -jar build/libs/g-all.jar
-- settings.gradle.kts --
rootProject.name = "g"
-- src/main/kotlin/App.kt --
import com.sun.net.httpserver.HttpServer
import java.net.InetSocketAddress
private const val FALLBACK = "4176"
fun main(args: Array<String>) {
    val port = (args.firstOrNull() ?: System.getenv("PORT") ?: FALLBACK).toInt()
    HttpServer.create(InetSocketAddress(port), 0).apply { start() }
}
` + manifest5, `PORT=5123 => any 5123
 => any 4176`},
	{"Kotlin: one of two objects", `-- Procfile --
web: java -jar build/libs/g-all.jar
-- settings.gradle.kts --
rootProject.name = "g"
-- src/main/kotlin/App.kt --
import com.sun.net.httpserver.HttpServer
import java.net.InetSocketAddress
sealed interface Env { val host: String; val port: Int }
object Local : Env { override val host = "127.0.0.1"; override val port = 6601 }
class Hosted(env: Map<String, String>) : Env { override val host = "0.0.0.0"; override val port = env.getValue("PORT").toInt() }
fun main() {
    val env: Env = if (System.getenv("PORT") != null) Hosted(System.getenv()) else Local
    HttpServer.create(InetSocketAddress(env.host, env.port), 0).start()
}
` + manifest5, `PORT=5123 => any 5123
 => loopback 6601`},
	{"Node.js: Nest on Fastify", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@nestjs/core":"1.0.0","@nestjs/platform-fastify":"1.0.0"}}
-- s.js --
const {NestFactory}=require("@nestjs/core");
const {FastifyAdapter}=require("@nestjs/platform-fastify");
async function b(){ const app=await NestFactory.create({}, new FastifyAdapter());
await app.listen(process.env.PORT??3000); } b();
`, "PORT=5123 => loopback 5123"},
	{"Node.js: ConfigService", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@nestjs/core":"1.0.0","@nestjs/config":"1.0.0"}}
-- s.js --
const {NestFactory}=require("@nestjs/core");
const {ConfigService}=require("@nestjs/config");
async function b(){ const app=await NestFactory.create({});
const c=app.get(ConfigService);
await app.listen(c.get("PORT") || 3000); } b();
`, `PORT=5123 => any 5123
 => any 3000`},
	{"Node.js: safeParse", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"zod":"1.0.0"}}
-- s.js --
const {z}=require("zod");
const r=z.object({PORT:z.string().default("3000").transform(Number)}).safeParse(process.env);
if(!r.success) process.exit(1);
require("http").createServer().listen(r.data.PORT);
`, `PORT=5123 => any 5123
 => any 3000`},
	{"Node.js: files of convict", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"convict":"1.0.0"}}
-- s.js --
const convict=require("convict");
const c=convict({ server:{ port:{ format:"port", default: 3000, env:"PORT" } } }); c.loadFile("./c.json");
require("http").createServer().listen(c.get("server.port"));
-- c.json --
{"server":{"port":3100}}
`, `PORT=5123 => any 5123
 => any 3100`},
	{"Node.js: layers of config", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"config":"1.0.0"}}
-- s.js --
const config=require("config"); require("http").createServer().listen(config.get("port"));
-- config/default.json --
{"port":3200}
-- config/production.json --
{"port":3201}
-- config/custom-environment-variables.json --
{"port":"PORT"}
`, `PORT=5123 => any 5123
 => any 3200
NODE_ENV=production => any 3201`},
	{"Node.js: several dotenv files", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"dotenv":"1.0.0"}}
-- s.js --
require("dotenv").config({ path: [".env.local", ".env"] }); require("http").createServer().listen(process.env.PORT);
-- .env --
PORT=3300
-- .env.local --
PORT=3301
`, `PORT=5123 => any 5123
 => any 3301`},
	{"Node.js: js-yaml", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"js-yaml":"1.0.0"}}
-- s.js --
const yaml=require("js-yaml");
const fs=require("fs");
const c=yaml.load(fs.readFileSync("c.yaml","utf8"));
require("http").createServer().listen(process.env.PORT||c.port, c.host);
-- c.yaml --
port: 3400
host: 127.0.0.1
`, ` => loopback 3400
PORT=5123 => loopback 5123`},
	{"Node.js: what Nest loads", `-- Procfile --
web: node dist/main.js
-- package.json --
{"name":"g","scripts":{"build":"tsc"},"dependencies":{"@nestjs/core":"1.0.0","@nestjs/config":"1.0.0","typescript":"1.0.0"}}
-- tsconfig.json --
{"compilerOptions":{"outDir":"dist","rootDir":"src"}}
-- src/main.ts --
 import { NestFactory } from "@nestjs/core";
 import { ConfigService } from "@nestjs/config";
 import { AppModule } from "./app.module";
async function bootstrap() {
  const app = await NestFactory.create(AppModule);
  const configService = app.get(ConfigService);
  const port = configService.get<number>("http.port");
  await app.listen(port);
}
bootstrap();
-- src/app.module.ts --
 import { Module } from "@nestjs/common";
 import { ConfigModule } from "@nestjs/config";
 import configuration from "./configuration";
@Module({ imports: [ConfigModule.forRoot({ load: [configuration] })] })
export class AppModule {}
-- src/configuration.ts --
export default () => ({ http: { port: parseInt(process.env.PORT, 10) || 3333 } });
`, `PORT=5123 => any 5123
 => any 3333`},
	{"Node.js: commander", `-- Procfile --
web: node s.js --port 8111 -H 127.0.0.1
-- package.json --
{"name":"g","scripts":{},"dependencies":{"commander":"1.0.0","express":"1.0.0"}}
-- s.js --
const { program } = require("commander");
program.option("-p, --port <number>", "port", "3000").option("-H, --host <h>", "host", "0.0.0.0");
program.parse();
const o = program.opts();
require("express")().listen(Number(o.port), o.host);
`, " => loopback 8111"},
	{"Node.js: yargs", `-- Procfile --
web: node s.js -p 8112
-- package.json --
{"name":"g","scripts":{},"dependencies":{"yargs":"1.0.0"}}
-- s.js --
const yargs=require("yargs/yargs");
const {hideBin}=require("yargs/helpers");
const argv=yargs(hideBin(process.argv)).option("port",{alias:"p",default:3000,type:"number"}).argv;
require("http").createServer().listen(argv.port);
`, " => any 8112"},
	{"Node.js: env-var", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"env-var":"1.0.0"}}
-- s.js --
const env=require("env-var");
const port=env.get("PORT").default("8116").asPortNumber();
require("http").createServer().listen(port);
`, `PORT=5123 => any 5123
 => any 8116`},
	{"Node.js: Joi", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"joi":"1.0.0"}}
-- s.js --
const Joi=require("joi");
const { value, error } = Joi.object({ PORT: Joi.number().default(8117) }).unknown().validate(process.env);
if (error) throw error;
module.exports = { port: value.PORT };
require("http").createServer().listen(value.PORT);
`, `PORT=5123 => any 5123
 => any 8117`},
	{"Node.js: switch in a function", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const conf = (() => { switch (process.env.NODE_ENV) { case "production": return { port: 80 }; case "test": return { port: 0 }; default: return { port: 8118 }; } })();
require("http").createServer().listen(conf.port);
`, ` => any 8118
NODE_ENV=production => any 80`},
	{"Node.js: the path of a socket", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const p = process.env.SOCKET_PATH || "/tmp/dome.sock"; require("http").createServer().listen({ path: p });
`, " => unix:/tmp/dome.sock"},
	{"Node.js: settings of pm2", `-- Procfile --
web: npx pm2-runtime ecosystem.config.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0","pm2":"1.0.0"}}
-- s.js --
require("express")().listen(process.env.PORT||8122);
-- ecosystem.config.js --
module.exports = { apps: [{ name: "g", script: "s.js", env: { PORT: 8123 } }] };
`, " => any 8123"},
	{"Node.js: a prefix of SvelteKit", `-- Procfile --
web: node build
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@sveltejs/kit":"1.0.0","@sveltejs/adapter-node":"1.0.0"}}
-- svelte.config.js --
 import adapter from "@sveltejs/adapter-node"; export default { kit: { adapter: adapter({ envPrefix: "DOME_" }) } };
`, `DOME_PORT=5125 PORT=5123 => any 5125
PORT=5123 => any 3000`},
	{"Node.js: ts-config-class", `-- Procfile --
web: node build/src/index.js
-- package.json --
{"name":"g","scripts":{"build":"tsc -p ."},"dependencies":{"express":"1.0.0","dotenv":"1.0.0","typescript":"1.0.0"}}
-- tsconfig.json --
{ "compilerOptions": { "outDir": "build", "rootDir": "." , "module": "commonjs"}, "include": ["src"] }
-- src/index.ts --
import 'dotenv/config';
import { createApp } from './app';
import { AppConfig } from './config/app-config';
const config = AppConfig.fromEnvironment(process.env);
const app = createApp();
app.listen(config.port, config.bindAddress, () => { console.log(` + "`" + `up on ${config.port}` + "`" + `); });
-- src/app.ts --
import express, { type Express } from 'express';
export function createApp(): Express { const app = express(); app.get('/', (_q, r) => { r.send('x'); }); return app; }
-- src/config/app-config.ts --
export interface Options { port: number; bindAddress: string }
export class AppConfig implements Options {
  private constructor(public readonly port: number, public readonly bindAddress: string) {}
  static fromEnvironment(env: NodeJS.ProcessEnv): AppConfig {
    return new AppConfig(Number.parseInt(env.PORT ?? '4100', 10), env.BIND ?? '0.0.0.0');
  }
}
`, `PORT=5123 => any 5123
BIND=127.0.0.1 => loopback 4100`},
	{"Node.js: singleton server", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --

const express = require('express');
const settings = require('./settings');
class Gate {
  #app; #server = null;
  constructor({ port, host } = settings.http) { this.#app = express(); this.port = port; this.host = host; }
  async start() { await new Promise((resolve) => { this.#server = this.#app.listen({ port: this.port, host: this.host }, resolve); }); return this; }
}
(async function main() { const g = new Gate(); await g.start(); })().catch((e) => { console.error(e); process.exitCode = 1; });
-- settings.js --
const num = (v, d) => { const n = Number(v); return Number.isInteger(n) && n > 0 ? n : d; };
exports.http = { port: num(process.env.PORT, 4101), host: process.env.HOST || "127.0.0.1" };
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4101`},
	{"Node.js: argv loop", `-- Procfile --
web: node s.js 4103
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const args = process.argv.slice(2);
const port = args[0] ? Number(args[0]) : 4102;
require("node:http").createServer((q,r)=>r.end()).listen(port);
`, " => any 4103"},
	{"Node.js: argv indexOf", `-- Procfile --
web: node s.js --port 4105
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const i = process.argv.indexOf("--port");
const port = i > -1 ? process.argv[i + 1] : 4104;
require("http").createServer().listen(port);
`, " => any 4105"},
	{"Node.js: env helper", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const required = (name) => { const v = process.env[name]; if (v === undefined) throw new Error(` + "`" + `missing ${name}` + "`" + `); return v; };
const optional = (name, d) => process.env[name] ?? d;
const cfg = Object.freeze({ port: Number(required("PORT")), host: optional("HOST", "::") });
require("http").createServer().listen(cfg.port, cfg.host);
`, `PORT=5123 => any 5123
 => exits`},
	{"Node.js: promise listen", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.mjs --
 import http from "node:http";
 import { once } from "node:events";
 import { setTimeout as wait } from "node:timers/promises";
const s = http.createServer(); s.listen({ host: "127.0.0.1", port: +process.env.PORT || 4106 });
await once(s, "listening");
`, `PORT=5123 => loopback 5123
 => loopback 4106`},
	{"Node.js: cluster", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const cluster=require("cluster");
const os=require("os");
if (cluster.isPrimary) { for (let i=0;i<os.cpus().length;i++) cluster.fork(); } else { require("express")().listen(process.env.PORT || 4107); }
`, "PORT=5123 => any 5123"},
	{"Node.js: json config env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const env = process.env.NODE_ENV || "development";
const conf = require(__dirname + "/conf.json")[env];
require("http").createServer().listen(conf.port, conf.host);
-- conf.json --
{"development":{"port":4108,"host":"localhost"},"production":{"port":4109,"host":"0.0.0.0"}}
`, ` => loopback 4108
NODE_ENV=production => any 4109`},
	{"Node.js: nconf", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"nconf":"1.0.0"}}
-- s.js --
const nconf=require("nconf"); nconf.argv().env().file({file:"c.json"}).defaults({PORT: 4110});
require("http").createServer().listen(nconf.get("PORT"));
`, `PORT=5123 => any 5123
 => any 4110`},
	{"Node.js: rc", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const app=require("express")();
app.set("port", process.env.PORT || 4111);
app.set("host","0.0.0.0");
app.listen(app.get("port"), app.get("host"));
`, `PORT=5123 => any 5123
 => any 4111`},
	{"Node.js: znv/zod nested", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{"zod":"1.0.0"}}
-- s.mjs --
 import { z } from "zod";
const Env = z.object({ PORT: z.coerce.number().int().min(1).default(4112), HOST: z.string().optional() });
const { PORT, HOST = "127.0.0.1" } = Env.parse(process.env);
 import http from "http"; http.createServer().listen(PORT, HOST);
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4112`},
	{"Node.js: env", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@t3-oss/env-core":"1.0.0","zod":"1.0.0"}}
-- s.mjs --
 import { createEnv } from "@t3-oss/env-core";
 import { z } from "zod";
export const env = createEnv({ server: { PORT: z.coerce.number().default(4113) }, runtimeEnv: process.env });
 import http from "http"; http.createServer().listen(env.PORT);
`, `PORT=5123 => any 5123
 => any 4113`},
	{"Node.js: fastify inject", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"fastify":"1.0.0"}}
-- s.js --
const build = require("./app");
const app = build({ logger: true });
app.listen({ port: parseInt(process.env.PORT || "4114"), host: "::" }, (err) => { if (err) { app.log.error(err);
process.exit(1); } });
-- app.js --
const fastify = require("fastify");
module.exports = function build(opts = {}) { const app = fastify(opts);
app.get("/", async () => ({ ok: true })); return app; };
`, `PORT=5123 => any 5123
 => any 4114`},
	{"Node.js: hapi", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@hapi/hapi":"1.0.0"}}
-- s.js --
const Hapi=require("@hapi/hapi");
const init = async () => { const server = Hapi.server({ port: process.env.PORT || 4115, host: process.env.HOST || "localhost" });
await server.start(); };
init();
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4115`},
	{"Node.js: express https redirect", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const fs=require("fs"), http=require("http"), https=require("https"), app=require("express")();
if (process.env.TLS_KEY) { https.createServer({key:fs.readFileSync(process.env.TLS_KEY)},app).listen(443); } else { http.createServer(app).listen(process.env.PORT || 4116); }
`, "PORT=5123 => any 5123"},
	{"Node.js: tsx", `-- Procfile --
web: npm start
-- package.json --
{"name":"g","scripts":{"start":"tsx server/main.ts"},"dependencies":{"tsx":"1.0.0"}}
-- server/main.ts --
 import { createServer } from "node:http";
 import { env } from "node:process";
enum Defaults { Port = 4117 }
const port: number = env["PORT"] ? Number(env["PORT"]) : Defaults.Port;
createServer((_, res) => void res.end("x")).listen(port);
`, `PORT=5123 => any 5123
 => any 4117`},
	{"Node.js: monorepo import", `-- Procfile --
web: node apps/api
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- apps/api/index.js --
const { port } = require("../../packages/conf"); require("http").createServer().listen(port);
-- packages/conf/index.js --
module.exports.port = process.env.API_PORT || process.env.PORT || 4118;
`, `PORT=5123 => any 5123
API_PORT=5124 PORT=5123 => any 5124`},
	{"Node.js: apollo", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{"@apollo/server":"1.0.0"}}
-- s.mjs --
 import { ApolloServer } from "@apollo/server";
 import { startStandaloneServer } from "@apollo/server/standalone";
const server = new ApolloServer({ typeDefs: "" });
const { url } = await startStandaloneServer(server, { listen: { port: Number(process.env.PORT) || 4119 } });
`, `PORT=5123 => any 5123
 => any 4119`},
	{"Node.js: bun hono", `-- Procfile --
web: bun run src/index.ts
-- package.json --
{"name":"g","scripts":{},"dependencies":{"hono":"1.0.0"}}
-- src/index.ts --
 import { Hono } from "hono";
const app = new Hono();
export default { port: Number(process.env.PORT ?? 4120), fetch: app.fetch };
`, `PORT=5123 => any 5123
 => any 4120`},
	{"Node.js: reduce env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const cfg = Object.fromEntries(Object.entries({ port: ["PORT", 5001], host: ["HOST", "0.0.0.0"] }).map(([k, [n, d]]) => [k, process.env[n] ?? d]));
require("http").createServer().listen(Number(cfg.port), cfg.host);
`, `PORT=5123 => any 5123
 => any 5001`},
	{"Node.js: getter", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
class Env { get port() { return parseInt(process.env.PORT, 10) || 5002; } static #inst = new Env(); static get instance() { return Env.#inst; } } require("http").createServer((q, r) => r.end("x")).listen(Env.instance.port);
`, `PORT=5123 => any 5123
 => any 5002
PORT=abc => any 5002`},
	{"Node.js: destruct env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const { PORT = 5003, HOST: host = "127.0.0.1" } = process.env;
const app = require("express")();
app.get("/", (q, r) => r.send("x"));
app.listen(PORT, host);
`, `PORT=5123 => loopback 5123
 => loopback 5003
HOST=0.0.0.0 => any 5003`},
	{"Node.js: esm config default", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","type":"module","dependencies":{"fastify":"5.0.0"}}
-- s.js --
 import config from "./config.js";
 import Fastify from "fastify";
const app = Fastify();
app.listen(config.server);
-- config.js --
const { env } = process;
export default { server: { port: Number(env.PORT || 5004), host: env.HOST || "0.0.0.0" } };
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 5004`},
	{"Node.js: callback style", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const http=require("http");
function start(port, cb) { const s = http.createServer(); s.listen(port, "localhost", () => cb(null, s)); } start(process.env.PORT || 5005, (e) => { if (e) throw e; });
`, `PORT=5123 => loopback 5123
 => loopback 5005`},
	{"Node.js: clamp", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const p = Math.min(Math.max(parseInt(process.env.PORT || "5006", 10), 1024), 65535);
require("http").createServer().listen(p);
`, `PORT=80 => any 1024
PORT=5123 => any 5123
 => any 5006`},
	{"Node.js: ternary chain", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const e = process.env.NODE_ENV;
const port = e === "production" ? process.env.PORT : e === "test" ? 0 : 5007;
const host = e === "production" ? undefined : "127.0.0.1";
require("http").createServer().listen(port, host);
`, ` => loopback 5007
NODE_ENV=production PORT=5123 => any 5123`},
	{"Node.js: url env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const u = new URL(process.env.BIND_URL || "http://0.0.0.0:5008");
require("http").createServer().listen(Number(u.port), u.hostname);
`, ` => any 5008
BIND_URL=http://127.0.0.1:5123 => loopback 5123`},
	{"Node.js: split env", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const [host, port] = (process.env.LISTEN || "127.0.0.1:5009").split(":");
require("http").createServer().listen(+port, host);
`, ` => loopback 5009
LISTEN=0.0.0.0:5123 => any 5123`},
	{"Node.js: koa class", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"koa":"1.0.0"}}
-- s.js --
const Koa = require("koa");
class App extends Koa { constructor(port) { super(); this.port = port; } start() { return this.listen(this.port); } } new App(process.env.PORT || 5010).start();
`, `PORT=5123 => any 5123
 => any 5010`},
	{"Node.js: frozen map", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const PORTS = new Map([["dev", 5011], ["prod", Number(process.env.PORT)]]);
require("http").createServer().listen(PORTS.get(process.env.STAGE || "dev"));
`, ` => any 5011
STAGE=prod PORT=5123 => any 5123`},
	{"Node.js: net", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const net = require("node:net");
const server = net.createServer((c) => c.end("x\n"));
server.on("error", (e) => { throw e; });
server.listen({ port: parseInt(process.env.PORT ?? 5012), host: "::" });
`, `PORT=5123 => any 5123
 => any 5012`},
	{"Node.js: try env file", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const fs=require("fs");
let conf = { port: 5013 };
try { conf = { ...conf, ...JSON.parse(fs.readFileSync("conf.json", "utf8")) }; } catch {} require("http").createServer().listen(process.env.PORT || conf.port);
-- conf.json --
{"port": 5014}
`, `PORT=5123 => any 5123
 => any 5014`},
	{"Node.js: existsSync", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const fs=require("fs");
const conf = fs.existsSync("./local.json") ? require("./local.json") : require("./base.json");
require("http").createServer().listen(conf.port);
-- base.json --
{"port": 5015}
`, " => any 5015"},
	{"Node.js: await import", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.mjs --
const { default: cfg } = await import("./cfg.mjs");
 import http from "node:http"; http.createServer().listen(cfg.port());
-- cfg.mjs --
export default { port: () => Number(process.env.PORT || 5016) };
`, `PORT=5123 => any 5123
 => any 5016`},
	{"Node.js: express router mount", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const express = require("express");
const app = express();
const api = express.Router(); api.get("/x", (q, r) => r.json({}));
app.use("/api", api);
const server = app.listen(process.env.PORT ? +process.env.PORT : 5017, process.env.NODE_ENV === "production" ? "0.0.0.0" : "localhost");
process.on("SIGTERM", () => server.close());
`, ` => loopback 5017
NODE_ENV=production PORT=5123 => any 5123`},
	{"Node.js: env fallback array", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const port = [process.env.APP_PORT, process.env.PORT, 5018].map(Number).find((n) => n > 0);
require("http").createServer().listen(port);
`, ` => any 5018
PORT=5123 => any 5123
APP_PORT=5124 PORT=5123 => any 5124`},
	{"Node.js: dotenv result", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"dotenv":"1.0.0"}}
-- s.js --
const { parsed = {} } = require("dotenv").config();
require("http").createServer().listen(process.env.PORT || parsed.PORT || 1);
-- .env --
PORT=5019
`, `PORT=5123 => any 5123
 => any 5019`},
	{"Node.js: fn default param", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const serve = ({ port = process.env.PORT, host } = {}) => require("http").createServer().listen(port ?? 5022, host ?? "127.0.0.1"); serve();
`, `PORT=5123 => loopback 5123
 => loopback 5022`},
	{"Node.js: listen string env exits", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
require("http").createServer().listen(Number(process.env.PORT));
`, `PORT=5123 => any 5123
PORT= => any 0
PORT=abc => exits`},
	{"Node.js: settings by environment in several files", `-- Procfile --
web: node server.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0","cors":"1.0.0","helmet":"1.0.0"}}
-- server.js --
const app = require('./src/app');
const { logger } = require('./src/lib/logger');
const { port, host } = require('./src/config');
const server = app.listen(port, host, () => logger.info({ port }, 'listening'));
function shutdown() { server.close(() => process.exit(0)); }
['SIGINT', 'SIGTERM'].forEach((s) => process.on(s, shutdown));
-- src/app.js --
const express = require('express');
const app = express();
app.disable('x-powered-by');
app.get('/health', (req, res) => res.json({ ok: true }));
module.exports = app;
-- src/lib/logger.js --
exports.logger = { info: console.log };
-- src/config/index.js --
const base = require('./base');
const env = process.env.NODE_ENV || 'development';
const overrides = { production: require('./production'), development: {} };
module.exports = { ...base, ...overrides[env] };
-- src/config/base.js --
module.exports = { port: parseInt(process.env.PORT, 10) || 6001, host: '127.0.0.1' };
-- src/config/production.js --
module.exports = { host: '0.0.0.0' };
`, ` => loopback 6001
NODE_ENV=production PORT=5123 => any 5123`},
	{"Node.js: an object of options that grows", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const opts = { port: 6005 };
if (process.env.PORT) opts.port = Number(process.env.PORT);
if (process.env.HOST) { opts.host = process.env.HOST; } require("http").createServer().listen(opts);
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 6005`},
	{"Node.js: an argument with its value", `-- Procfile --
web: node s.js --port=6007
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
let port = 6006;
const arg = process.argv.find((a) => a.startsWith("--port="));
if (arg) port = Number(arg.split("=")[1]);
require("http").createServer().listen(port);
`, " => any 6007"},
	{"Node.js: run only when it is the main module", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.mjs --
 import { createServer } from "http";
const { PORT: port = 6010 } = process.env;
export const server = createServer();
if (process.argv[1] === new URL(import.meta.url).pathname) server.listen(port);
`, "PORT=5123 => any 5123"},
	{"Node.js: a checked number, and an end without one", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
if (require.main === module) main();
function main() { const port = getPort();
require("http").createServer().listen(port, "0.0.0.0"); } function getPort() { const raw = process.env.PORT;
if (!raw) return 6011;
const n = Number(raw);
if (!Number.isInteger(n) || n < 0) { console.error("bad PORT");
process.exit(1); } return n; }
`, `PORT=5123 => any 5123
 => any 6011
PORT=abc => exits`},
	{"Node.js: a static field", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
module.exports = class Api { static PORT = process.env.API_PORT ?? 6012; static run() { return require("http").createServer().listen(this.PORT); } };
if (!module.parent) module.exports.run();
`, ` => any 6012
API_PORT=5123 => any 5123`},
	{"Node.js: a program without an extension", `-- Procfile --
web: node ./bin/www
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- bin/www --
#!/usr/bin/env node
var app = require("../app");
var http = require("http");
var port = normalizePort(process.env.PORT || "6013");
app.set("port", port);
var server = http.createServer(app);
server.listen(port);
function normalizePort(val) {
  var port = parseInt(val, 10);
  if (isNaN(port)) { return val; }
  if (port >= 0) { return port; }
  return false;
}
-- app.js --
module.exports = require("express")();
`, `PORT=5123 => any 5123
 => any 6013`},
	{"Node.js: a file of settings that a variable may name", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const fs=require("fs"), path=require("path");
const file = process.env.CONFIG || path.join(__dirname, "config.json");
const cfg = JSON.parse(fs.readFileSync(file));
require("http").createServer().listen(cfg.listen.port, cfg.listen.host);
-- config.json --
{"listen":{"port":6014,"host":"0.0.0.0"}}
`, " => any 6014"},
	{"Node.js: defaults under the environment", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const { PORT } = { PORT: 6016, ...process.env }; require("http").createServer().listen(PORT);
`, `PORT=5123 => any 5123
 => any 6016`},
	{"Node.js: an empty fallback that does not stand in", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const port = parseInt(process.env.PORT) ?? 6017; require("http").createServer().listen(port);
`, `PORT=5123 => any 5123
 => exits`},
	{"Node.js: two values at once", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const isProd = process.env.NODE_ENV === "production";
const [host, port] = isProd ? ["0.0.0.0", process.env.PORT] : ["127.0.0.1", 6020];
require("http").createServer().listen(port, host);
`, ` => loopback 6020
NODE_ENV=production PORT=5123 => any 5123`},
	{"Node.js: a class over a file of settings", `-- Procfile --
web: node index.js
-- package.json --
{"name":"g","type":"module","dependencies":{"fastify":"5.0.0"}}
-- index.js --
import { build } from './lib/build.js';
import { loadConfig } from './lib/config.js';
const config = await loadConfig();
const app = await build(config);
try {
  await app.listen({ host: config.get('host'), port: config.get('port') });
} catch (error) {
  app.log.error(error);
  process.exitCode = 1;
}
-- lib/build.js --
import Fastify from 'fastify';
export async function build(config) {
  const app = Fastify({ logger: config.get('log') === 'on' });
  app.get('/', async () => 'x');
  return app;
}
-- lib/config.js --
import { readFile } from 'node:fs/promises';
class Config {
  #values;
  constructor(values) { this.#values = values; }
  get(name) { return this.#values[name]; }
}
export async function loadConfig() {
  const file = JSON.parse(await readFile(new URL('../config.json', import.meta.url)));
  return new Config({ ...file, port: Number(process.env.PORT ?? file.port) });
}
-- config.json --
{ "host": "0.0.0.0", "port": 7001, "log": "on" }
`, `PORT=5123 => any 5123
 => any 7001`},
	{"Node.js: a parameter with a default", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const http=require("http");
const startServer = async (port = process.env.PORT || 7003) => { const server = http.createServer();
await new Promise((ok, bad) => { server.once("error", bad);
server.listen(port, "0.0.0.0", ok); }); return server; }; startServer();
`, `PORT=5123 => any 5123
 => any 7003`},
	{"Node.js: a switch over an argument", `-- Procfile --
web: node s.js prod
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
var port = 7005;
switch (process.argv[2]) { case "prod": port = process.env.PORT; break; case "test": port = 0; break; } require("http").createServer().listen(port);
`, "PORT=5123 => any 5123"},
	{"Node.js: reduce over defaults", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const defaults = require("./defaults.json");
const env = Object.keys(defaults).reduce((acc, k) => ({ ...acc, [k]: process.env[k] ?? defaults[k] }), {});
require("http").createServer().listen(env.PORT, env.HOST);
-- defaults.json --
{"PORT": 7007, "HOST": "127.0.0.1"}
`, `PORT=5123 => loopback 5123
 => loopback 7007`},
	{"Node.js: a property put on the application", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const app=require("express")(); app.locals.port = process.env.PORT || 7009; app.listen(app.locals.port);
`, `PORT=5123 => any 5123
 => any 7009`},
	{"Node.js: a loop over names", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const { createServer } = require("node:http");
const s = createServer();
const port = (() => { for (const name of ["APP_PORT", "PORT"]) { if (process.env[name]) return Number(process.env[name]); } return 7012; })(); s.listen(port);
`, `PORT=5123 => any 5123
 => any 7012
APP_PORT=5124 => any 5124`},
	{"Node.js: a global of another file", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
global.CONFIG = { port: process.env.PORT || 7013 }; require("./server");
-- server.js --
require("http").createServer().listen(CONFIG.port);
`, `PORT=5123 => any 5123
 => any 7013`},
	{"Node.js: a class over the environment", `-- Procfile --
web: node dist/main.js
-- package.json --
{"name":"g","scripts":{"build":"tsc"},"dependencies":{"typescript":"1.0.0","express":"1.0.0"}}
-- tsconfig.json --
{"compilerOptions":{"outDir":"./dist","rootDir":"./src"}}
-- src/main.ts --
 import express from "express";
 import { env } from "./env";
const app = express();
async function bootstrap(): Promise<void> {
  app.listen(env.int("PORT", 7014), env.str("HOST", "0.0.0.0"));
}
void bootstrap();
-- src/env.ts --
class Env {
  constructor(private readonly source: NodeJS.ProcessEnv = process.env) {}
  str(name: string, fallback?: string): string { const v = this.source[name] ?? fallback; if (v === undefined) throw new Error(name); return v; }
  int(name: string, fallback?: number): number { const raw = this.source[name]; return raw ? parseInt(raw, 10) : (fallback as number); }
}
export const env = new Env();
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 7014`},
	{"Node.js: an option with a parser of its own", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const express = require("express");
const { program } = require("commander");
program.name("gate").option("-p, --port <port>", "port", (v) => parseInt(v, 10), Number(process.env.PORT) || 8001).parse(process.argv);
const { port } = program.opts();
express().listen(port);
`, `PORT=5123 => any 5123
 => any 8001`},
	{"Node.js: variables of the parser of arguments", `-- Procfile --
web: node s.js --host 0.0.0.0
-- package.json --
{"name":"g","scripts":{},"dependencies":{"yargs":"1.0.0"}}
-- s.js --
const argv = require("yargs")(process.argv.slice(2)).env("GATE").options({ port: { type: "number", default: 8002 }, host: { type: "string", default: "127.0.0.1" } }).parseSync();
require("http").createServer().listen(argv.port, argv.host);
`, ` => any 8002
GATE_PORT=5123 => any 5123`},
	{"Node.js: destructured options", `-- Procfile --
web: node s.mjs --port 8005
-- package.json --
{"name":"g","scripts":{},"dependencies":{"ws":"1.0.0"}}
-- s.mjs --
 import { WebSocketServer } from "ws";
 import { parseArgs } from "node:util";
const { values: { port = process.env.PORT ?? "8004", host } } = parseArgs({ options: { port: { type: "string" }, host: { type: "string", default: "::1" } } });
new WebSocketServer({ port: +port, host });
`, ` => loopback 8005
PORT=5123 => loopback 8005`},
	{"Node.js: socket.io by itself", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"socket.io":"1.0.0"}}
-- s.js --
const { Server } = require("socket.io");
const io = new Server({ cors: { origin: "*" } });
io.on("connection", () => {});
io.listen(Number(process.env.PORT) || 8007);
`, `PORT=5123 => any 5123
 => any 8007`},
	{"Node.js: a dotenv file for each environment", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"dotenv":"1.0.0"}}
-- s.js --
require("dotenv").config({ path: ` + "`" + `.env.${process.env.NODE_ENV || "development"}` + "`" + ` });
require("http").createServer().listen(process.env.PORT);
-- .env.development --
PORT=8009
-- .env.production --
PORT=8010
`, ` => any 8009
NODE_ENV=production => any 8010
PORT=5123 => any 5123`},
	{"Node.js: a variable that must be there", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"koa":"1.0.0"}}
-- s.js --
const Koa = require("koa");
const app = new Koa();
const PORT = process.env.PORT;
if (!PORT) { console.error("PORT is required"); process.exit(1); }
app.listen(PORT);
`, `PORT=5123 => any 5123
 => exits`},
	{"Node.js: settings made by a function", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{"express":"1.0.0"}}
-- s.js --
const express = require("express");
const config = require("./lib/config")();
const app = express();
app.get("/", (q, r) => r.send("x"));
if (config.enabled) {
  app.listen(config.port, config.host);
}
-- lib/config.js --
module.exports = function () {
  const port = parseInt(process.env.PORT || "9001", 10);
  if (isNaN(port)) throw new Error("PORT");
  return { enabled: process.env.ENABLED !== "no", port, host: process.env.HOST || "0.0.0.0" };
};
`, `PORT=5123 => any 5123
PORT=abc => exits
HOST=127.0.0.1 => loopback 9001`},
	{"Node.js: a class that overrides a method", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.js --
const http = require("http");
class Base { get defaults() { return { port: 9002, host: "localhost" }; } get options() { return { ...this.defaults, ...this.overrides() }; } overrides() { return {}; } listen() { const { port, host } = this.options; http.createServer().listen(port, host); } }
class Gate extends Base { overrides() { return process.env.PORT ? { port: Number(process.env.PORT) } : {}; } }
new Gate().listen();
`, `PORT=5123 => loopback 5123
 => loopback 9002`},
	{"Node.js: a dotted path into settings", `-- Procfile --
web: node s.mjs
-- package.json --
{"name":"g","scripts":{},"dependencies":{}}
-- s.mjs --
 import http from "node:http";
 import { config } from "./config/index.mjs";
http.createServer().listen(config("http.port"), config("http.host"));
-- config/index.mjs --
 import defaults from "./defaults.mjs";
export function config(path) { return path.split(".").reduce((o, k) => o?.[k], defaults); }
-- config/defaults.mjs --
export default { http: { port: Number(process.env.PORT) || 9003, host: "127.0.0.1" } };
`, `PORT=5123 => loopback 5123
 => loopback 9003`},
	{"PHP: function", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
function env(string $k, ?string $d = null): ?string { $v = getenv($k); return $v === false ? $d : $v; }
$config = require __DIR__ . "/config.php";
$s = stream_socket_server("tcp://{$config['host']}:{$config['port']}");
while ($c = stream_socket_accept($s)) {}
-- config.php --
<?php
return ["host" => "0.0.0.0", "port" => (int) env("PORT", "4160")];
`, `PORT=5123 => any 5123
 => any 4160`},
	{"PHP: -S router", `-- Procfile --
web: composer start
-- composer.json --
{"scripts":{"start":"php -S 127.0.0.1:4161 -t public public/index.php"}}
-- public/index.php --
<?php
`, " => loopback 4161"},
	{"PHP: swoole static", `-- Procfile --
web: php s.php
-- composer.json --
{"require":{"ext-swoole":"*"}}
-- s.php --
<?php
final class Config {
  public const HOST = "0.0.0.0";
  public static function port(): int { return (int) ($_SERVER["PORT"] ?? 4162); }
}
$server = new \Swoole\Http\Server(Config::HOST, Config::port());
$server->start();
`, `PORT=5123 => any 5123
 => any 4162`},
	{"PHP: null coalesce", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = $_ENV["PORT"] ?? $_SERVER["PORT"] ?? getenv("PORT") ?: "5301";
$s = stream_socket_server("tcp://127.0.0.1:$port", $e, $m);
while (true) { stream_socket_accept($s); }
`, `PORT=5123 => loopback 5123
 => loopback 5301`},
	{"PHP: class const", `-- Procfile --
web: php s.php
-- s.php --
<?php
class Gate { const PORT = 5302; public function __construct(private string $host = "0.0.0.0", private ?int $port = null) { $this->port ??= (int) (getenv("PORT") ?: self::PORT); }
 public function run(): void { $s = socket_create(AF_INET, SOCK_STREAM, SOL_TCP); socket_bind($s, $this->host, $this->port); socket_listen($s); socket_accept($s); } }
(new Gate())->run();
`, `PORT=5123 => any 5123
 => any 5302`},
	{"PHP: ini", `-- Procfile --
web: php s.php
-- s.php --
<?php
$conf = parse_ini_file(__DIR__ . "/conf.ini", true);
$s = stream_socket_server(sprintf("tcp://%s:%d", $conf["web"]["host"], getenv("PORT") !== false ? getenv("PORT") : $conf["web"]["port"]));
stream_socket_accept($s);
-- conf.ini --
[web]
host = 0.0.0.0
port = 5303
`, `PORT=5123 => any 5123
 => any 5303`},
	{"PHP: match", `-- Procfile --
web: php s.php
-- s.php --
<?php
declare(strict_types=1);
$env = getenv("APP_ENV") ?: "local";
[$host, $port] = match ($env) { "prod" => ["0.0.0.0", getenv("PORT")], default => ["127.0.0.1", "5305"] };
$s = stream_socket_server("tcp://{$host}:{$port}");
stream_socket_accept($s);
`, ` => loopback 5305
APP_ENV=prod PORT=5123 => any 5123`},
	{"PHP: a class with a named constructor", `-- Procfile --
web: php bin/server.php
-- composer.json --
{}
-- bin/server.php --
<?php
require_once dirname(__DIR__) . "/src/Config.php";
use Gate\Config;
$c = Config::fromEnv();
$socket = stream_socket_server("tcp://" . $c->address());
while ($conn = @stream_socket_accept($socket, -1)) { fclose($conn); }
-- src/Config.php --
<?php
namespace Gate;
final readonly class Config {
  private function __construct(public string $host, public int $port) {}
  public static function fromEnv(): self { return new self(getenv("HOST") ?: "0.0.0.0", (int) (getenv("PORT") ?: 6301)); }
  public function address(): string { return "{$this->host}:{$this->port}"; }
}
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 6301`},
	{"PHP: lines of a dotenv file put in by hand", `-- Procfile --
web: php s.php
-- s.php --
<?php
if (file_exists(__DIR__ . "/.env")) { foreach (file(__DIR__ . "/.env") as $l) { putenv(trim($l)); } }
$s = stream_socket_server("tcp://127.0.0.1:" . (getenv("PORT") ?: "6304"));
stream_socket_accept($s);
`, `PORT=5123 => loopback 5123
 => loopback 6304`},
	{"PHP: arrays that are merged", `-- Procfile --
web: php s.php
-- s.php --
<?php
$config = array_merge(["host" => "127.0.0.1", "port" => 6305], array_filter(["host" => getenv("HOST"), "port" => getenv("PORT")]));
$s = stream_socket_server("tcp://" . $config["host"] . ":" . $config["port"]);
stream_socket_accept($s);
`, ` => loopback 6305
PORT=5123 => loopback 5123`},
	{"PHP: a class found by its namespace", `-- Procfile --
web: php server.php
-- composer.json --
{ "autoload": { "psr-4": { "Gate\\": "src/" } }, "require": { "react/http": "^1.9" } }
-- server.php --
<?php
declare(strict_types=1);
require __DIR__ . '/vendor/autoload.php';
use Gate\Env;
use React\Http\HttpServer;
use React\Socket\SocketServer;
$env = new Env();
$http = new HttpServer(fn($request) => React\Http\Message\Response::plaintext('x'));
$socket = new SocketServer(sprintf('%s:%d', $env->string('HOST', '0.0.0.0'), $env->int('PORT', 7301)));
$http->listen($socket);
-- src/Env.php --
<?php
namespace Gate;
final class Env {
    public function string(string $name, string $default): string { $v = getenv($name); return $v === false || $v === '' ? $default : $v; }
    public function int(string $name, int $default): int { return (int) $this->string($name, (string) $default); }
}
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 7301
PORT= => any 7301`},
	{"PHP: an argument or a variable", `-- Procfile --
web: php s.php
-- s.php --
<?php
$port = isset($argv[1]) ? (int) $argv[1] : (int) (getenv("PORT") ?: 7302);
$server = stream_socket_server("tcp://0.0.0.0:" . $port, $errno, $errstr) or exit(1);
while ($c = stream_socket_accept($server, -1)) { fclose($c); }
`, `PORT=5123 => any 5123
 => any 7302`},
	{"PHP: an address that is split", `-- Procfile --
web: php s.php
-- s.php --
<?php
[$host, $port] = explode(":", getenv("LISTEN") ?: "127.0.0.1:8301");
$sock = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
socket_set_option($sock, SOL_SOCKET, SO_REUSEADDR, 1);
socket_bind($sock, $host, (int) $port);
socket_listen($sock);
while ($c = socket_accept($sock)) socket_close($c);
`, ` => loopback 8301
LISTEN=0.0.0.0:5123 => any 5123`},
	{"PHP: scripts that call one another", `-- Procfile --
web: composer run-script start
-- composer.json --
{"scripts":{"start":["@build","php -S 0.0.0.0:${PORT:-8302} -t public"],"build":"echo built"}}
-- public/index.php --
<?php
`, `PORT=5123 => any 5123
 => any 8302`},
	{"PHP: an abstract class", `-- Procfile --
web: php s.php
-- s.php --
<?php
abstract class Server { abstract protected function port(): int; public function run(): void { $s = stream_socket_server("tcp://0.0.0.0:" . $this->port()); stream_socket_accept($s); } }
class Gate extends Server { protected function port(): int { return (int) (getenv("PORT") ?: 9301); } }
(new Gate)->run();
`, `PORT=5123 => any 5123
 => any 9301`},
	{"Python: decouple", `-- Procfile --
web: python s.py
-- requirements.txt --
python-decouple
-- s.py --
from decouple import config
from http.server import HTTPServer
HTTPServer(("", config("PORT", cast=int)), None).serve_forever()
-- .env --
PORT=8001
`, `PORT=5123 => any 5123
 => any 8001`},
	{"Python: environs", `-- Procfile --
web: python s.py
-- requirements.txt --
environs
-- s.py --
from environs import Env
env = Env()
env.read_env()
from http.server import HTTPServer
with env.prefixed("DOME_"):
    port = env.int("PORT", 8002)
HTTPServer(("", port), None).serve_forever()
`, `DOME_PORT=5123 => any 5123
 => any 8002`},
	{"Python: a scheme of environ", `-- Procfile --
web: python s.py
-- requirements.txt --
django-environ
-- s.py --
import environ
env = environ.Env(PORT=(int, 8003))
from http.server import HTTPServer
HTTPServer(("", env("PORT")), None).serve_forever()
`, `PORT=5123 => any 5123
 => any 8003`},
	{"Python: aliases of pydantic", `-- Procfile --
web: python s.py
-- requirements.txt --
pydantic-settings
uvicorn
-- s.py --
from pydantic import Field, AliasChoices
from pydantic_settings import BaseSettings
class S(BaseSettings):
    port: int = Field(8004, validation_alias=AliasChoices("PORT", "APP_PORT"))
    host: str = Field("0.0.0.0", alias="BIND_HOST")
s = S()
from http.server import HTTPServer
HTTPServer((s.host, s.port), None).serve_forever()
`, `PORT=5123 => any 5123
APP_PORT=5124 BIND_HOST=127.0.0.1 => loopback 5124
 => any 8004`},
	{"Python: models in models", `-- Procfile --
web: python s.py
-- requirements.txt --
pydantic-settings
-- s.py --
from pydantic import BaseModel
from pydantic_settings import BaseSettings, SettingsConfigDict
class Web(BaseModel):
    port: int = 8005
class S(BaseSettings):
    model_config = SettingsConfigDict(env_nested_delimiter="__")
    web: Web = Web()
from http.server import HTTPServer
HTTPServer(("", S().web.port), None).serve_forever()
`, `WEB__PORT=5123 => any 5123
 => any 8005`},
	{"Python: Typer", `-- Procfile --
web: python s.py
-- requirements.txt --
typer
uvicorn
-- s.py --
import typer, uvicorn
cli = typer.Typer()
@cli.command()
def serve(port: int = typer.Option(8138, envvar="PORT"), host: str = "0.0.0.0"):
    uvicorn.run("app:app", host=host, port=port)
if __name__ == "__main__":
    cli()
-- app.py --
app=None
`, `PORT=5123 => any 5123
 => any 8138`},
	{"Python: YAML beside the program", `-- Procfile --
web: python s.py
-- requirements.txt --
pyyaml
-- s.py --
import yaml, os
from pathlib import Path
from http.server import HTTPServer
BASE = Path(__file__).resolve().parent
c = yaml.safe_load((BASE / "conf.yml").read_text())
HTTPServer((c["host"], int(os.environ.get("PORT", c["port"]))), None).serve_forever()
-- conf.yml --
host: 127.0.0.1
port: 8141
`, `PORT=5123 => loopback 5123
 => loopback 8141`},
	{"Python: websockets", `-- Procfile --
web: python s.py
-- requirements.txt --
websockets
-- s.py --
import asyncio, os
import websockets
async def main():
    async with websockets.serve(lambda ws: None, "0.0.0.0", int(os.environ.get("PORT", 8151))):
        await asyncio.Future()
asyncio.run(main())
`, "PORT=5123 => any 5123"},
	{"Python: flask app package", `-- Procfile --
web: python wsgi.py
-- requirements.txt --
flask
gunicorn
-- dome/__init__.py --
from flask import Flask
def create_app():
    app = Flask(__name__)
    app.config.from_object("dome.config.Config")
    return app
-- dome/config.py --
import os
class Config:
    PORT = int(os.environ.get("PORT", "4130"))
    HOST = os.environ.get("HOST", "0.0.0.0")
-- wsgi.py --
from dome import create_app
app = create_app()
if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"])
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 4130`},
	{"Python: gunicorn conf py", `-- Procfile --
web: gunicorn app:app
-- requirements.txt --
flask
gunicorn
-- app.py --
app = None
-- gunicorn.conf.py --
import os
import multiprocessing
bind = f"{os.getenv('HOST', '0.0.0.0')}:{os.getenv('PORT', '4131')}"
workers = multiprocessing.cpu_count()
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 4131`},
	{"Python: gunicorn custom app", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
gunicorn
-- s.py --

import os
from gunicorn.app.base import BaseApplication
class Standalone(BaseApplication):
    def __init__(self, app, options=None):
        self.options = options or {}
        self.application = app
        super().__init__()
    def load_config(self):
        for key, value in self.options.items():
            self.cfg.set(key.lower(), value)
    def load(self):
        return self.application
if __name__ == "__main__":
    options = {"bind": "%s:%s" % ("0.0.0.0", os.environ.get("PORT", "4132")), "workers": 2}
    Standalone(lambda e, s: [], options).run()
`, `PORT=5123 => any 5123
 => any 4132`},
	{"Python: dataclass conf", `-- Procfile --
web: python s.py
-- requirements.txt --
uvicorn
-- s.py --

import os
from dataclasses import dataclass, field
import uvicorn
@dataclass(frozen=True)
class Settings:
    host: str = field(default_factory=lambda: os.getenv("HOST", "127.0.0.1"))
    port: int = int(os.getenv("PORT", "4133"))
settings = Settings()
def main() -> None:
    uvicorn.run("app:app", host=settings.host, port=settings.port, log_level="info")
if __name__ == "__main__":
    main()
-- app.py --
app=None
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4133`},
	{"Python: configparser", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --

import configparser, os
from wsgiref.simple_server import make_server
cp = configparser.ConfigParser()
cp.read("dome.ini")
host = cp.get("web", "host")
port = cp.getint("web", "port", fallback=4134)
with make_server(host, int(os.environ.get("PORT", port)), lambda e, s: []) as httpd:
    httpd.serve_forever()
-- dome.ini --
[web]
host = 0.0.0.0
port = 4135
`, `PORT=5123 => any 5123
 => any 4135`},
	{"Python: lru_cache settings", `-- Procfile --
web: python -m app
-- requirements.txt --
pydantic-settings
uvicorn
fastapi
-- app/__init__.py --
-- app/settings.py --
from functools import lru_cache
from pydantic_settings import BaseSettings, SettingsConfigDict
class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="dome_", env_file=".env")
    port: int = 4136
    host: str = "0.0.0.0"
@lru_cache
def get_settings() -> Settings:
    return Settings()
-- app/__main__.py --
import uvicorn
from .settings import get_settings
def run():
    s = get_settings()
    uvicorn.run("app.main:app", host=s.host, port=s.port)
if __name__ == "__main__":
    run()
-- app/main.py --
from fastapi import FastAPI
app = FastAPI()
`, `DOME_PORT=5123 => any 5123
 => any 4136`},
	{"Python: argparse env default", `-- Procfile --
web: python s.py -b 0.0.0.0
-- requirements.txt --

-- s.py --

import argparse, os
from http.server import ThreadingHTTPServer, BaseHTTPRequestHandler
def parse(argv=None):
    p = argparse.ArgumentParser(description="gate")
    p.add_argument("--bind", "-b", metavar="ADDRESS", default=os.environ.get("BIND", "127.0.0.1"))
    p.add_argument("port", nargs="?", type=int, default=int(os.environ.get("PORT", 4137)))
    return p.parse_args(argv)
def main():
    args = parse()
    ThreadingHTTPServer((args.bind, args.port), BaseHTTPRequestHandler).serve_forever()
main()
`, `PORT=5123 => any 5123
 => any 4137`},
	{"Python: socket bind", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import socket, os
HOST, PORT = "", int(os.environ.get("PORT", 4138))
with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as s:
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    s.bind((HOST, PORT))
    s.listen()
    while True:
        c, a = s.accept()
`, `PORT=5123 => any 5123
 => any 4138`},
	{"Python: asyncio proto", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import asyncio, os
class P(asyncio.Protocol): pass
async def main(port: int):
    loop = asyncio.get_running_loop()
    server = await loop.create_server(P, "0.0.0.0", port)
    async with server:
        await server.serve_forever()
asyncio.run(main(int(os.getenv("PORT") or 4139)))
`, `PORT=5123 => any 5123
PORT= => any 4139`},
	{"Python: tornado options", `-- Procfile --
web: python s.py --port=4141
-- requirements.txt --
tornado
-- s.py --
from tornado.options import define, options, parse_command_line
import tornado.web, tornado.ioloop
define("port", default=4140, type=int)
parse_command_line()
tornado.web.Application([]).listen(options.port)
tornado.ioloop.IOLoop.current().start()
`, " => any 4141"},
	{"Python: starlette hypercorn", `-- Procfile --
web: python s.py
-- requirements.txt --
hypercorn
-- s.py --
import asyncio, os
from hypercorn.config import Config
from hypercorn.asyncio import serve
async def app(scope, receive, send): ...
config = Config()
config.bind = [f"0.0.0.0:{os.environ.get('PORT', 4142)}"]
asyncio.run(serve(app, config))
`, `PORT=5123 => any 5123
 => any 4142`},
	{"Python: django manage env", `-- Procfile --
web: python manage.py runserver 0.0.0.0:$PORT
-- requirements.txt --
django
-- manage.py --
import os, sys
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings")
from django.core.management import execute_from_command_line
execute_from_command_line(sys.argv)
-- hill/__init__.py --
-- hill/settings.py --
DEBUG=False
`, "PORT=5123 => any 5123"},
	{"Python: toml conf", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import tomllib, os
from http.server import HTTPServer, SimpleHTTPRequestHandler
with open("dome.toml", "rb") as f:
    CONF = tomllib.load(f)
server = CONF["server"]
port = int(os.environ.get("PORT", server.get("port", 1)))
HTTPServer((server["host"], port), SimpleHTTPRequestHandler).serve_forever()
-- dome.toml --
[server]
host = "0.0.0.0"
port = 4143
`, `PORT=5123 => any 5123
 => any 4143`},
	{"Python: sanic", `-- Procfile --
web: python s.py
-- requirements.txt --
sanic
-- s.py --
from sanic import Sanic
import os
app = Sanic("Dome")
if __name__ == "__main__":
    app.run(host="0.0.0.0", port=int(os.environ["PORT"]), single_process=True)
`, `PORT=5123 => any 5123
 => exits`},
	{"Python: bottle", `-- Procfile --
web: python s.py
-- requirements.txt --
bottle
-- s.py --
from bottle import Bottle, run
import os
app = Bottle()
run(app, host="0.0.0.0", port=os.environ.get("PORT", 4144), server="wsgiref")
`, `PORT=5123 => any 5123
 => any 4144`},
	{"Python: match env", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
match os.environ.get("APP_ENV", "dev"):
    case "prod":
        addr = ("0.0.0.0", int(os.environ["PORT"]))
    case _:
        addr = ("localhost", 4145)
HTTPServer(addr, None).serve_forever()
`, ` => loopback 4145
APP_ENV=prod PORT=5123 => any 5123`},
	{"Python: uvicorn ssl flags", `-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port ${PORT:-4146} --proxy-headers
-- requirements.txt --
uvicorn
fastapi
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, `PORT=5123 => any 5123
 => any 4146`},
	{"Python: fastapi run", `-- Procfile --
web: fastapi run app.py --port $PORT
-- requirements.txt --
fastapi
-- app.py --
from fastapi import FastAPI
app = FastAPI()
`, "PORT=5123 => any 5123"},
	{"Python: waitress code", `-- Procfile --
web: python s.py
-- requirements.txt --
waitress
-- s.py --
from waitress import serve
import os
def app(e, s): return []
serve(app, listen="*:" + os.environ.get("PORT", "4147"))
`, `PORT=5123 => any 5123
 => any 4147`},
	{"Python: os environ or", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
-- s.py --
import os
from flask import Flask
app = Flask(__name__)
app.run("0.0.0.0", os.environ.get("PORT") or 5101)
`, `PORT=5123 => any 5123
PORT= => any 5101`},
	{"Python: namedtuple", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from collections import namedtuple
from http.server import HTTPServer
Conf = namedtuple("Conf", "host port")
conf = Conf(host=os.getenv("HOST", ""), port=int(os.getenv("PORT", 5102)))
HTTPServer((conf.host, conf.port), None).serve_forever()
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 5102`},
	{"Python: NamedTuple class", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from typing import NamedTuple
from http.server import HTTPServer
class Address(NamedTuple):
    host: str = "127.0.0.1"
    port: int = 5103
HTTPServer(Address(port=int(os.environ.get("PORT", "5104"))), None).serve_forever()
`, `PORT=5123 => loopback 5123
 => loopback 5104`},
	{"Python: try int", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
try:
    port = int(os.environ["PORT"])
except (KeyError, ValueError):
    port = 5105
HTTPServer(("", port), None).serve_forever()
`, `PORT=5123 => any 5123
 => any 5105
PORT=abc => any 5105`},
	{"Python: walrus", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
if (p := os.environ.get("PORT")) and p.isdigit():
    port = int(p)
else:
    port = 5106
HTTPServer(("localhost", port), None).serve_forever()
`, `PORT=5123 => loopback 5123
PORT=abc => loopback 5106`},
	{"Python: enum", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from enum import Enum, IntEnum
from http.server import HTTPServer
class Ports(IntEnum):
    DEV = 5107
    PROD = 5108
mode = os.environ.get("MODE", "dev")
port = Ports.PROD if mode == "prod" else Ports.DEV
HTTPServer(("", port), None).serve_forever()
`, ` => any 5107
MODE=prod => any 5108`},
	{"Python: dict get dispatch", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
CONF = {"dev": ("127.0.0.1", 5109), "prod": ("0.0.0.0", int(os.environ.get("PORT", 1)))}
host, port = CONF.get(os.environ.get("MODE", ""), CONF["dev"])
HTTPServer((host, port), None).serve_forever()
`, ` => loopback 5109
MODE=prod PORT=5123 => any 5123`},
	{"Python: fstring rsplit", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
addr = os.environ.get("ADDR", "127.0.0.1:5110")
host, _, port = addr.rpartition(":")
HTTPServer((host, int(port)), None).serve_forever()
`, ` => loopback 5110
ADDR=0.0.0.0:5123 => any 5123
ADDR=:5123 => any 5123`},
	{"Python: class server", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
class Gate(ThreadingHTTPServer):
    def __init__(self, port=None):
        super().__init__(("0.0.0.0", port or int(os.environ.get("PORT", "5111"))), BaseHTTPRequestHandler)
if __name__ == "__main__":
    Gate().serve_forever()
`, `PORT=5123 => any 5123
 => any 5111`},
	{"Python: kwargs spread", `-- Procfile --
web: python s.py
-- requirements.txt --
uvicorn
-- s.py --
import os, uvicorn
async def app(scope, receive, send): ...
options = {"host": "0.0.0.0", "port": 5112}
if "PORT" in os.environ:
    options["port"] = int(os.environ["PORT"])
uvicorn.run(app, **options)
`, `PORT=5123 => any 5123
 => any 5112`},
	{"Python: json env", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import json, os
from http.server import HTTPServer
conf = json.loads(os.environ.get("CONF", '{"host": "127.0.0.1", "port": 5113}'))
HTTPServer((conf["host"], conf["port"]), None).serve_forever()
`, " => loopback 5113"},
	{"Python: loop env", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer
def first(*names, default):
    for n in names:
        if n in os.environ:
            return os.environ[n]
    return default
HTTPServer(("", int(first("APP_PORT", "PORT", default=5114))), None).serve_forever()
`, ` => any 5114
PORT=5123 => any 5123`},
	{"Python: tornado multi", `-- Procfile --
web: python s.py
-- requirements.txt --
tornado
-- s.py --
import os, asyncio, tornado.web
async def main():
    app = tornado.web.Application([])
    app.listen(os.environ.get("PORT", 5115), "127.0.0.1")
    await asyncio.Event().wait()
asyncio.run(main())
`, `PORT=5123 => loopback 5123
 => loopback 5115`},
	{"Python: aiohttp main", `-- Procfile --
web: python s.py
-- requirements.txt --
aiohttp
-- s.py --
import os
from aiohttp import web
def make():
    app = web.Application()
    return app
if __name__ == "__main__":
    port = os.getenv("PORT")
    web.run_app(make(), host="0.0.0.0", port=int(port) if port else 5116)
`, `PORT=5123 => any 5123
 => any 5116`},
	{"Python: gunicorn conf dict", `-- Procfile --
web: gunicorn -c conf/gunicorn.py app:app
-- requirements.txt --
flask
gunicorn
-- app.py --
app=None
-- conf/gunicorn.py --
from os import environ as env
bind = ["{}:{}".format(env.get("HOST", "0.0.0.0"), env.get("PORT", 5117))]
`, `PORT=5123 => any 5123
HOST=localhost => loopback 5117`},
	{"Python: waitress url", `-- Procfile --
web: python s.py
-- requirements.txt --
waitress
flask
-- s.py --
import os
from waitress import serve
from flask import Flask
app = Flask("g")
serve(app, host=os.environ.get("HOST", "127.0.0.1"), port=os.environ.get("PORT", 5118), threads=4)
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 5118`},
	{"Python: xmlrpc", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from xmlrpc.server import SimpleXMLRPCServer
with SimpleXMLRPCServer(("0.0.0.0", int(os.environ.get("PORT", 5120)))) as s:
    s.serve_forever()
`, `PORT=5123 => any 5123
 => any 5120`},
	{"Python: socketserver class attr", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os, socketserver
class H(socketserver.StreamRequestHandler):
    def handle(self): pass
class S:
    HOST = "127.0.0.1"
    PORT = int(os.environ.get("PORT", 5121))
class T(socketserver.ThreadingMixIn, socketserver.TCPServer):
    allow_reuse_address = True
with T((S.HOST, S.PORT), H) as srv:
    srv.serve_forever()
`, `PORT=5123 => loopback 5123
 => loopback 5121`},
	{"Python: dotenv values", `-- Procfile --
web: python s.py
-- requirements.txt --
python-dotenv
-- s.py --
from dotenv import dotenv_values
import os
from http.server import HTTPServer
conf = {**dotenv_values(".env"), **os.environ}
HTTPServer(("", int(conf["PORT"])), None).serve_forever()
-- .env --
PORT=5122
`, `PORT=5123 => any 5123
 => any 5122`},
	{"Python: classes of settings", `-- Procfile --
web: python run.py
-- requirements.txt --
flask
-- run.py --
from hill import create_app
from hill.settings import settings
application = create_app()
def main():
    application.run(host=settings.HOST, port=settings.PORT, debug=settings.DEBUG)
if __name__ == "__main__":
    main()
-- hill/__init__.py --
from flask import Flask
def create_app():
    return Flask(__name__)
-- hill/settings.py --
import os
class Base:
    HOST = "127.0.0.1"
    PORT = 6101
    DEBUG = True
class Production(Base):
    HOST = "0.0.0.0"
    DEBUG = False
    PORT = int(os.environ.get("PORT", Base.PORT))
settings = {"production": Production, "development": Base}[os.environ.get("APP_ENV", "development")]
`, ` => loopback 6101
APP_ENV=production PORT=5123 => any 5123`},
	{"Python: the arguments handed to main", `-- Procfile --
web: python s.py 6103
-- requirements.txt --

-- s.py --
import os, sys
from http.server import HTTPServer, BaseHTTPRequestHandler
def main(argv):
    port = int(argv[1]) if len(argv) > 1 else int(os.environ.get("PORT", "6102"))
    HTTPServer(("", port), BaseHTTPRequestHandler).serve_forever()
if __name__ == "__main__":
    sys.exit(main(sys.argv))
`, " => any 6103"},
	{"Python: a comprehension over defaults", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
DEFAULTS = dict(host="127.0.0.1", port="6107")
cfg = {k: os.environ.get(k.upper(), v) for k, v in DEFAULTS.items()}
HTTPServer((cfg["host"], int(cfg["port"])), BaseHTTPRequestHandler).serve_forever()
`, `PORT=5123 => loopback 5123
 => loopback 6107`},
	{"Python: a context manager of its own", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os, contextlib
from http.server import ThreadingHTTPServer as Server, BaseHTTPRequestHandler as H
@contextlib.contextmanager
def serving(addr):
    s = Server(addr, H)
    try:
        yield s
    finally:
        s.server_close()
with serving(("0.0.0.0", int(os.environ["PORT"]))) as s:
    s.serve_forever()
`, `PORT=5123 => any 5123
 => exits`},
	{"Python: the configuration of Flask, changed later", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
-- s.py --
from flask import Flask
import os
app = Flask(__name__)
app.config.update(PORT=6109, HOST="0.0.0.0")
app.config["PORT"] = int(os.environ.get("PORT", app.config["PORT"]))
if __name__ == "__main__":
    app.run(app.config["HOST"], app.config["PORT"])
`, `PORT=5123 => any 5123
 => any 6109`},
	{"Python: prefixed variables of Flask", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
-- s.py --
from flask import Flask
app = Flask(__name__)
app.config.from_prefixed_env("GATE")
app.run(host="0.0.0.0", port=app.config.get("PORT", 6110))
`, ` => any 6110
GATE_PORT=5123 => any 5123`},
	{"Python: a data class that settles itself", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from dataclasses import dataclass
from http.server import HTTPServer, BaseHTTPRequestHandler
@dataclass
class Conf:
    host: str = "127.0.0.1"
    port: int = 6117
    def __post_init__(self):
        self.port = int(os.environ.get("PORT", self.port))
    @property
    def address(self):
        return self.host, self.port
HTTPServer(Conf(host="0.0.0.0").address, BaseHTTPRequestHandler).serve_forever()
`, `PORT=5123 => any 5123
 => any 6117`},
	{"Python: a data class from a file", `-- Procfile --
web: python main.py
-- requirements.txt --
uvicorn
starlette
-- main.py --
from __future__ import annotations
import logging
from gate.config import Config
from gate.server import serve
def main() -> int:
    logging.basicConfig(level=logging.INFO)
    config = Config.load()
    serve(config)
    return 0
if __name__ == "__main__":
    raise SystemExit(main())
-- gate/__init__.py --
-- gate/config.py --
from __future__ import annotations
import os
from dataclasses import dataclass
from pathlib import Path
import tomllib
@dataclass(slots=True)
class Config:
    host: str
    port: int
    debug: bool = False
    @classmethod
    def load(cls, path: Path = Path("gate.toml")) -> Config:
        data = tomllib.loads(path.read_text())
        web = data["web"]
        return cls(host=os.environ.get("HOST", web["host"]), port=int(os.environ.get("PORT", web["port"])))
-- gate/server.py --
import uvicorn
from .config import Config
async def app(scope, receive, send): ...
def serve(config: Config) -> None:
    uvicorn.run(app, host=config.host, port=config.port, log_level="debug" if config.debug else "info")
-- gate.toml --
[web]
host = "0.0.0.0"
port = 7101
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 7101`},
	{"Python: stripped text", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
HOST = os.environ.get("HOST", "127.0.0.1").strip()
PORT = os.environ.get("PORT", "").strip() or "7102"
print(f"{HOST}:{PORT}")
server = HTTPServer((HOST, int(PORT)), BaseHTTPRequestHandler)
try:
    server.serve_forever()
except KeyboardInterrupt:
    pass
finally:
    server.server_close()
`, `PORT=5123 => loopback 5123
PORT= => loopback 7102
HOST=0.0.0.0 => any 7102`},
	{"Python: one instance and a property", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
class Settings:
    _instance = None
    def __new__(cls):
        if cls._instance is None:
            cls._instance = super().__new__(cls)
        return cls._instance
    @property
    def port(self): return int(os.getenv("PORT", 7103))
HTTPServer(("", Settings().port), BaseHTTPRequestHandler).serve_forever()
`, `PORT=5123 => any 5123
 => any 7103`},
	{"Python: a helper that casts", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
def env(name, default=None, cast=str):
    value = os.environ.get(name)
    if value is None or value == "":
        if default is None:
            raise RuntimeError(f"{name} is not set")
        return default
    return cast(value)
HTTPServer((env("HOST", "0.0.0.0"), env("PORT", 7104, int)), BaseHTTPRequestHandler).serve_forever()
`, `PORT=5123 => any 5123
PORT= => any 7104
PORT=abc => exits`},
	{"Python: a switch of debugging", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
-- s.py --
import os
from flask import Flask
app = Flask(__name__)
@app.get("/")
def i(): return "x"
def run():
    debug = os.environ.get("DEBUG", "0").lower() in ("1", "true", "yes")
    host = "127.0.0.1" if debug else "0.0.0.0"
    app.run(host=host, port=int(os.environ.get("PORT", 7105)), debug=debug)
if __name__ == "__main__":
    run()
`, `PORT=5123 => any 5123
DEBUG=true => loopback 7105`},
	{"Python: a group of commands", `-- Procfile --
web: python s.py serve --host 0.0.0.0
-- requirements.txt --
click
uvicorn
-- s.py --
import click, uvicorn
@click.group()
def cli(): ...
@cli.command()
@click.option("--host", default="127.0.0.1", show_default=True, envvar="GATE_HOST")
@click.option("--port", "-p", default=7107, type=int, envvar=["GATE_PORT", "PORT"])
def serve(host, port):
    uvicorn.run("app:app", host=host, port=port)
if __name__ == "__main__":
    cli()
-- app.py --
app=None
`, `PORT=5123 => any 5123
 => any 7107
GATE_PORT=5124 PORT=5123 => any 5124`},
	{"Python: a function in the settings of gunicorn", `-- Procfile --
web: gunicorn app:app
-- requirements.txt --
flask
gunicorn
-- app.py --
app=None
-- gunicorn.conf.py --
import os

def _bind():
    sock = os.environ.get("SOCKET")
    if sock:
        return f"unix:{sock}"
    return f"{os.environ.get('HOST', '0.0.0.0')}:{int(os.environ.get('PORT', 7110))}"

bind = _bind()
workers = int(os.environ.get("WEB_CONCURRENCY", 2))
`, `PORT=5123 => any 5123
SOCKET=/run/g.sock => unix:/run/g.sock`},
	{"Python: defaults set by the shell", `-- Procfile --
web: sh start.sh
-- requirements.txt --
gunicorn
flask
-- app.py --
app=None
-- start.sh --
#!/bin/sh
set -e
: "${PORT:=7111}"
HOST=${HOST:-0.0.0.0}
exec gunicorn --bind "$HOST:$PORT" app:app
`, `PORT=5123 => any 5123
 => any 7111
HOST=127.0.0.1 => loopback 7111`},
	{"Python: a mapping of Hypercorn", `-- Procfile --
web: python s.py
-- requirements.txt --
hypercorn
-- s.py --
import os, asyncio
from hypercorn.asyncio import serve
from hypercorn.config import Config
async def app(s, r, x): ...
cfg = Config.from_mapping(bind=["127.0.0.1:" + os.environ.get("PORT", "7112")])
asyncio.run(serve(app, cfg))
`, `PORT=5123 => loopback 5123
 => loopback 7112`},
	{"Python: create_server of waitress", `-- Procfile --
web: python s.py
-- requirements.txt --
waitress
-- s.py --
import os
from waitress import create_server
def app(e, s): return []
server = create_server(app, host="0.0.0.0", port=int(os.environ.get("PORT", 7113)))
server.run()
`, `PORT=5123 => any 5123
 => any 7113`},
	{"Python: load_dotenv", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
python-dotenv
-- s.py --
import os
from dotenv import load_dotenv
from flask import Flask
load_dotenv()
app = Flask(__name__)
if __name__ == "__main__":
    app.run(host=os.getenv("FLASK_HOST", "0.0.0.0"), port=int(os.getenv("FLASK_PORT", "8101")))
-- .env --
FLASK_PORT=8102
`, ` => any 8102
FLASK_PORT=5123 => any 5123`},
	{"Python: a nested Config class", `-- Procfile --
web: python s.py
-- requirements.txt --
uvicorn
fastapi
pydantic-settings
-- s.py --
import uvicorn
from fastapi import FastAPI
from pydantic_settings import BaseSettings
class Settings(BaseSettings):
    app_host: str = "0.0.0.0"
    app_port: int = 8105
    reload: bool = False
    class Config:
        env_file = ".env"
settings = Settings()
app = FastAPI()
if __name__ == "__main__":
    uvicorn.run("s:app", host=settings.app_host, port=settings.app_port, reload=settings.reload)
`, `APP_PORT=5123 => any 5123
 => any 8105
APP_HOST=127.0.0.1 => loopback 8105`},
	{"Python: a subclass that calls its base", `-- Procfile --
web: python s.py
-- requirements.txt --
tornado
-- s.py --
import tornado.web, tornado.ioloop, os
class App(tornado.web.Application):
    def __init__(self):
        super().__init__([])
def main():
    app = App()
    port = int(os.environ.get("PORT", 8107))
    app.listen(port)
    tornado.ioloop.IOLoop.current().start()
if __name__ == "__main__":
    main()
`, `PORT=5123 => any 5123
 => any 8107`},
	{"Python: keywords and defaults", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os, socketserver
class Echo(socketserver.BaseRequestHandler):
    def handle(self): self.request.sendall(self.request.recv(10))
def serve(host: str = "localhost", port: int = 8109) -> None:
    with socketserver.ThreadingTCPServer((host, port), Echo) as s:
        s.serve_forever()
if __name__ == "__main__":
    serve(port=int(os.environ.get("PORT", 8110)))
`, `PORT=5123 => loopback 5123
 => loopback 8110`},
	{"Python: an address made of two", `-- Procfile --
web: python serve.py
-- requirements.txt --
flask
waitress
-- app.py --
from flask import Flask
app = Flask(__name__)
-- serve.py --
from waitress import serve
import app
import os
serve(app.app, listen=f"{os.environ.get('HOST', '127.0.0.1')}:{os.environ.get('PORT', '8111')}")
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 8111`},
	{"Python: options that are spread", `-- Procfile --
web: python s.py
-- requirements.txt --
flask
-- s.py --
from flask import Flask
import os
class Server:
    def __init__(self, app=None, **kw):
        self.app = app or Flask(__name__)
        self.options = {"host": "127.0.0.1", "port": 9101, **kw}
    def start(self):
        self.app.run(**self.options)
Server(host="0.0.0.0", port=int(os.environ.get("PORT", 9102))).start()
`, `PORT=5123 => any 5123
 => any 9102`},
	{"Python: text of digits", `-- Procfile --
web: python s.py
-- requirements.txt --
uvicorn
-- s.py --
import os, uvicorn
from typing import Final
DEFAULT_PORT: Final = 9104
def port() -> int:
    raw = os.environ.get("PORT")
    return int(raw) if raw is not None and raw.isdecimal() else DEFAULT_PORT
async def app(s, r, x): ...
if __name__ == "__main__":
    server = uvicorn.Server(uvicorn.Config(app, host="0.0.0.0", port=port()))
    server.run()
`, `PORT=5123 => any 5123
 => any 9104`},
	{"Python: a file for each stage", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import json, os, pathlib
from http.server import HTTPServer, BaseHTTPRequestHandler
here = pathlib.Path(__file__).parent
conf = json.loads((here / "conf" / f"{os.environ.get('STAGE', 'dev')}.json").read_text())
HTTPServer((conf["host"], conf["port"]), BaseHTTPRequestHandler).serve_forever()
-- conf/dev.json --
{"host":"127.0.0.1","port":9105}
-- conf/live.json --
{"host":"0.0.0.0","port":9106}
`, ` => loopback 9105
STAGE=live => any 9106`},
	{"Ruby: settings of unicorn", `-- Procfile --
web: bundle exec unicorn -c config/unicorn.rb
-- Gemfile --
source "https://x"
gem "rack"
gem "puma"
gem "unicorn"
gem "thin"
gem "falcon"
gem "rails"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- config/unicorn.rb --
listen ENV.fetch("PORT", 8080).to_i
worker_processes 2
`, `PORT=5123 => any 5123
 => any 8080`},
	{"Ruby: rails with an environment", `-- Procfile --
web: bin/rails server -e production
-- Gemfile --
source "https://x"
gem "rack"
gem "puma"
gem "unicorn"
gem "thin"
gem "falcon"
gem "rails"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- bin/rails --
#!/usr/bin/env ruby
-- config/application.rb --
require "rails"
`, "PORT=5123 => any 5123"},
	{"Ruby: puma rb", `-- Procfile --
web: bundle exec puma
-- Gemfile --
source "https://x"
gem "rack"
gem "puma"
gem "unicorn"
gem "thin"
gem "falcon"
gem "rails"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- config/puma.rb --
threads 1, 5
port ENV.fetch("PORT") { 4150 }
environment ENV.fetch("RACK_ENV") { "production" }
`, `PORT=5123 => any 5123
 => any 4150`},
	{"Ruby: puma rb bind", `-- Procfile --
web: bundle exec puma -C config/puma.rb
-- Gemfile --
source "https://x"
gem "rack"
gem "puma"
gem "unicorn"
gem "thin"
gem "falcon"
gem "rails"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- config/puma.rb --
host = ENV.fetch("HOST", "0.0.0.0")
port = Integer(ENV["PORT"] || 4151)
bind "tcp://#{host}:#{port}"
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 4151`},
	{"Ruby: sinatra classic", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://x"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"
set :bind, "0.0.0.0"
set :port, ENV.fetch("PORT", 4152)
get("/") { "x" }
`, `PORT=5123 => any 5123
 => any 4152`},
	{"Ruby: sinatra modular", `-- Procfile --
web: ruby app.rb
-- Gemfile --
source "https://x"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra/base"
class Gate < Sinatra::Base
  configure do
    set :bind, "127.0.0.1"
    set :port, 4153
  end
  get("/") { "x" }
  run! if app_file == $0
end
`, " => loopback 4153"},
	{"Ruby: tcpserver mod", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
module Gate
  DEFAULTS = { host: "0.0.0.0", port: 4154 }.freeze
  def self.run(opts = {})
    o = DEFAULTS.merge(opts)
    s = TCPServer.new(o[:host], o[:port])
    loop { s.accept }
  end
end
Gate.run(port: (ENV["PORT"] || 4155).to_i)
`, `PORT=5123 => any 5123
 => any 4155`},
	{"Ruby: rackup handler", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source "https://x"
gem "rack"
gem "puma"
-- s.rb --
require "rack/handler/puma"
app = ->(env) { [200, {}, []] }
Rack::Handler::Puma.run(app, Port: ENV.fetch("PORT", "4156"), Host: "0.0.0.0")
`, `PORT=5123 => any 5123
 => any 4156`},
	{"Ruby: fetch block", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
port = Integer(ENV.fetch("PORT") { "5201" })
server = TCPServer.open("0.0.0.0", port)
while (c = server.accept) do c.close end
`, `PORT=5123 => any 5123
 => any 5201
PORT=abc => exits`},
	{"Ruby: class config", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "webrick"
class Config
  attr_reader :port, :host
  def initialize(env = ENV)
    @port = env.fetch("PORT", 5202).to_i
    @host = env["HOST"] || "127.0.0.1"
  end
end
c = Config.new
WEBrick::HTTPServer.new(Port: c.port, BindAddress: c.host).start
-- Gemfile --
source "https://x"
gem "webrick"
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 5202`},
	{"Ruby: case env", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
host, port = case ENV["APP_ENV"]
             when "production" then ["0.0.0.0", ENV.fetch("PORT").to_i]
             else ["127.0.0.1", 5203]
             end
TCPServer.new(host, port).accept
`, ` => loopback 5203
APP_ENV=production PORT=5123 => any 5123`},
	{"Ruby: puma conf if", `-- Procfile --
web: bundle exec puma -C config/puma.rb
-- Gemfile --
source "https://x"
gem "puma"
gem "rack"
-- config.ru --
run ->(e) { [200, {}, []] }
-- config/puma.rb --
workers 0
if ENV["RACK_ENV"] == "production"
  port ENV.fetch("PORT"), "0.0.0.0"
else
  port 5204, "127.0.0.1"
end
`, ` => loopback 5204
RACK_ENV=production PORT=5123 => any 5123`},
	{"Ruby: argv", `-- Procfile --
web: ruby s.rb 5208
-- s.rb --
require "socket"
port = (ARGV[0] || ENV["PORT"] || 5207).to_i
TCPServer.new("", port).accept
`, ` => any 5208
PORT=5123 => any 5208`},
	{"Ruby: struct", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
Conf = Struct.new(:host, :port, keyword_init: true) do
  def self.from(env) = new(host: env.fetch("HOST", "0.0.0.0"), port: Integer(env.fetch("PORT", "5209")))
end
conf = Conf.from(ENV)
TCPServer.new(conf.host, conf.port).accept
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 5209`},
	{"Ruby: json", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "json"
require "socket"
conf = JSON.parse(File.read("conf.json"), symbolize_names: true)
TCPServer.new(conf[:host], ENV.fetch("PORT", conf[:port]).to_i).accept
-- conf.json --
{"host":"127.0.0.1","port":5210}
`, `PORT=5123 => loopback 5123
 => loopback 5210`},
	{"Ruby: values_at of one of several", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
CONFIG = {
  "development" => { host: "127.0.0.1", port: 6201 },
  "production" => { host: "0.0.0.0", port: ENV["PORT"].to_i },
}.freeze
cfg = CONFIG.fetch(ENV.fetch("RACK_ENV", "development"))
TCPServer.new(*cfg.values_at(:host, :port)).accept
`, ` => loopback 6201
RACK_ENV=production PORT=5123 => any 5123`},
	{"Ruby: a class, and a program without an extension", `-- Procfile --
web: ruby bin/gate
-- lib/gate/server.rb --
require "socket"
module Gate
  class Server
    def initialize(port:, host: "127.0.0.1")
      @port, @host = port, host
    end
    def start
      TCPServer.new(@host, @port).accept
    end
  end
end
-- bin/gate --
#!/usr/bin/env ruby
require_relative "../lib/gate/server"
Gate::Server.new(port: ENV.fetch("PORT", 6204).to_i).start
`, `PORT=5123 => loopback 5123
 => loopback 6204`},
	{"Ruby: settings of Sinatra for production", `-- Procfile --
web: ruby app.rb
-- Gemfile --
source "https://x"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"
configure :production do
  set :bind, "0.0.0.0"
end
set :port, 6205
get("/") { "x" }
`, ` => loopback 6205
APP_ENV=production => any 6205`},
	{"Ruby: a number or a rescue", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
port = begin
  Integer(ENV["PORT"])
rescue TypeError, ArgumentError
  6208
end
TCPServer.new("0.0.0.0", port).accept
`, `PORT=5123 => any 5123
 => any 6208
PORT=abc => any 6208`},
	{"Ruby: a Struct with a method", `-- Procfile --
web: ruby server.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- server.rb --
require "webrick"
require_relative "lib/settings"
settings = Gate::Settings.load
server = WEBrick::HTTPServer.new(
  BindAddress: settings.host,
  Port: settings.port,
  AccessLog: []
)
server.mount_proc("/") { |_req, res| res.body = "x" }
trap("TERM") { server.shutdown }
server.start
-- lib/settings.rb --
module Gate
  Settings = Struct.new(:host, :port, keyword_init: true) do
    def self.load(env = ENV)
      new(host: env.fetch("HOST", "0.0.0.0"), port: Integer(env.fetch("PORT", 7201)))
    end
  end
end
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 7201`},
	{"Ruby: empty counts as missing", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
PORT = (ENV["PORT"].nil? || ENV["PORT"].empty?) ? 7202 : ENV["PORT"].to_i
srv = TCPServer.new(PORT)
loop { Thread.start(srv.accept) { |c| c.close } }
`, `PORT=5123 => any 5123
PORT= => any 7202`},
	{"Ruby: a socket or a port", `-- Procfile --
web: bundle exec puma -C config/puma.rb
-- Gemfile --
source "https://x"
gem "puma"
gem "rack"
-- config.ru --
run ->(e) { [200, {}, []] }
-- config/puma.rb --
port_number = ENV.fetch("PORT", 7204).to_i
if ENV["SOCKET"]
  bind "unix://#{ENV["SOCKET"]}"
else
  bind "tcp://0.0.0.0:#{port_number}"
end
threads_count = ENV.fetch("THREADS", 3)
threads threads_count, threads_count
`, `PORT=5123 => any 5123
SOCKET=/run/p.sock => unix:/run/p.sock`},
	{"Ruby: settings in the class", `-- Procfile --
web: bundle exec ruby app.rb
-- Gemfile --
source "https://x"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra/base"
class Dome < Sinatra::Base
  set :bind, ENV.fetch("HOST", "0.0.0.0")
  set :port, ENV.fetch("PORT", 8201).to_i
  get("/") { "x" }
  run! if __FILE__ == $PROGRAM_NAME
end
`, `PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 8201`},
	{"Ruby: spread keywords", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "webrick"
port = ENV["PORT"] ? Integer(ENV["PORT"]) : 8202
opts = { Port: port, DocumentRoot: "." }
opts[:BindAddress] = "127.0.0.1" unless ENV["PUBLIC"]
s = WEBrick::HTTPServer.new(**opts)
s.start
-- Gemfile --
source "https://x"
gem "webrick"
`, `PORT=5123 => loopback 5123
PUBLIC=1 => any 8202`},
	{"Ruby: YAML beside the program", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "yaml"
require "socket"
settings = YAML.safe_load(File.read(File.expand_path("settings.yml", __dir__)))
port = ENV.fetch("PORT", settings.dig("server", "port"))
TCPServer.new(settings["server"]["host"], port).accept
-- settings.yml --
server:
  host: 127.0.0.1
  port: 8203
`, `PORT=5123 => loopback 5123
 => loopback 8203`},
	{"Ruby: methods of a module itself", `-- Procfile --
web: ruby s.rb
-- s.rb --
require "socket"
module Gate
  class << self
    def port = Integer(ENV.fetch("PORT", "9201"))
    def host
      ENV["HOST"] || "127.0.0.1"
    end
    def run
      TCPServer.new(host, port).accept
    end
  end
end
Gate.run
`, `PORT=5123 => loopback 5123
 => loopback 9201`},
	{"Rust: clap by its builder", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = "4"
tokio = "1"
axum = "0.8"
hyper = "1"
-- src/main.rs --
use clap::{Arg, Command};
fn main() {
    let m = Command::new("g").arg(Arg::new("port").long("port").env("PORT").default_value("8096")).get_matches();
    let port: &String = m.get_one("port").unwrap();
    let l = std::net::TcpListener::bind(format!("0.0.0.0:{port}")).unwrap();
    for _ in l.incoming() {}
}
`, `PORT=5123 => any 5123
 => any 8096`},
	{"Rust: axum state", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = "4"
tokio = "1"
axum = "0.8"
hyper = "1"
-- src/main.rs --

use std::{env, net::{IpAddr, Ipv4Addr, SocketAddr}};
struct Config { addr: SocketAddr }
impl Config {
    fn from_env() -> Self {
        let port = env::var("PORT").map(|p| p.parse().expect("PORT must be a number")).unwrap_or(4190);
        Config { addr: SocketAddr::new(IpAddr::V4(Ipv4Addr::UNSPECIFIED), port) }
    }
}
#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let config = Config::from_env();
    let app = axum::Router::new();
    let listener = tokio::net::TcpListener::bind(config.addr).await?;
    axum::serve(listener, app).await?;
    Ok(())
}
`, `PORT=5123 => any 5123
 => any 4190
PORT=x => exits`},
	{"Rust: actix tuple", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
actix-web = "4"
-- src/main.rs --

use actix_web::{web, App, HttpServer};
const HOST: &str = "0.0.0.0";
#[actix_web::main]
async fn main() -> std::io::Result<()> {
    let port: u16 = match std::env::var("PORT") { Ok(v) => v.parse().unwrap_or(4191), Err(_) => 4191 };
    HttpServer::new(move || App::new().route("/", web::get())).bind(format!("{HOST}:{port}"))?.workers(2).run().await
}
`, `PORT=5123 => any 5123
 => any 4191
PORT=x => any 4191`},
	{"Rust: warp try", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
warp = "0.3"
-- src/main.rs --

#[tokio::main]
async fn main() {
    let port = std::env::var("PORT").unwrap_or("4192".into()).parse::<u16>().unwrap();
    warp::serve(routes()).run(([0, 0, 0, 0], port)).await
}
`, `PORT=5123 => any 5123
 => any 4192`},
	{"Rust: args", `-- Procfile --
web: ./target/release/g 0.0.0.0:5603
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = "4"
tokio = "1"
axum = "0.8"
hyper = "1"
-- src/main.rs --
use std::env;
fn main() {
    let addr = env::args().nth(1).unwrap_or_else(|| "127.0.0.1:5602".to_string());
    let l = std::net::TcpListener::bind(&addr).unwrap();
    for s in l.incoming() {}
}
`, " => any 5603"},
	{"Rust: struct default", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = "4"
tokio = "1"
axum = "0.8"
hyper = "1"
-- src/main.rs --
#[derive(Clone)]
struct Config { host: String, port: u16 }
impl Default for Config { fn default() -> Self { Self { host: "0.0.0.0".into(), port: 5604 } } }
impl Config { fn load() -> Self { let mut c = Self::default(); if let Ok(p) = std::env::var("PORT") { c.port = p.parse().expect("port"); } c } }
#[tokio::main]
async fn main() {
    let c = Config::load();
    let l = tokio::net::TcpListener::bind(format!("{}:{}", c.host, c.port)).await.unwrap();
    axum::serve(l, axum::Router::new()).await.unwrap();
}
`, `PORT=5123 => any 5123
 => any 5604`},
	{"Rust: a match on text", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
clap = "4"
tokio = "1"
axum = "0.8"
hyper = "1"
-- src/main.rs --
use std::net::TcpListener;
use std::str::FromStr;
#[derive(Debug)]
enum Mode { Dev, Prod }
impl FromStr for Mode { type Err = String; fn from_str(s: &str) -> Result<Self, String> { match s { "dev" => Ok(Mode::Dev), "prod" => Ok(Mode::Prod), o => Err(o.into()) } } }
fn main() {
    let addr = match std::env::var("MODE").as_deref() { Ok("prod") => format!("0.0.0.0:{}", std::env::var("PORT").expect("PORT")), _ => String::from("127.0.0.1:6602") };
    let l = TcpListener::bind(addr).unwrap();
    for _ in l.incoming() {}
}
`, ` => loopback 6602
MODE=prod PORT=5123 => any 5123`},
	{"Rust: a result with the question mark", `-- Procfile --
web: ./target/release/g
-- Cargo.toml --
[package]
name = "g"
version = "0.1.0"
edition = "2021"
[dependencies]
actix-web = "4"
-- src/main.rs --
use actix_web::{App, HttpServer};
use std::env;
struct Settings { host: String, port: u16 }
impl Settings {
    fn new() -> Result<Self, std::num::ParseIntError> {
        let port = env::var("PORT").unwrap_or_else(|_| String::from("8601")).parse::<u16>()?;
        Ok(Self { host: env::var("HOST").unwrap_or("127.0.0.1".to_owned()), port })
    }
}
#[actix_web::main]
async fn main() -> std::io::Result<()> {
    let settings = Settings::new().expect("settings");
    HttpServer::new(App::new).bind((settings.host.as_str(), settings.port))?.run().await
}
`, `PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 8601
PORT=abc => exits`},
}

const manifest1 = `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId><version>3.5.7</version></parent><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><groupId>org.springframework.boot</groupId><artifactId>spring-boot-maven-plugin</artifactId></plugin></plugins></build></project>
`

const manifest2 = `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.quarkus</groupId><artifactId>quarkus-rest</artifactId><version>3.28.0</version></dependency></dependencies><build><plugins><plugin><groupId>io.quarkus.platform</groupId><artifactId>quarkus-maven-plugin</artifactId><version>3.28.0</version></plugin></plugins></build></project>
`

const manifest3 = `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>io.helidon.webserver</groupId><artifactId>helidon-webserver</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
`

const manifest4 = `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>g</groupId><artifactId>g</artifactId><version>1</version><dependencies><dependency><groupId>x</groupId><artifactId>y</artifactId><version>5.0.0</version></dependency></dependencies><build><finalName>g</finalName><plugins><plugin><artifactId>maven-shade-plugin</artifactId><executions><execution><goals><goal>shade</goal></goals></execution></executions><configuration><transformers><transformer implementation="org.apache.maven.plugins.shade.resource.ManifestResourceTransformer"><mainClass>g.Main</mainClass></transformer></transformers></configuration></plugin></plugins></build></project>
`

const manifest5 = `-- build.gradle.kts --
plugins { kotlin("jvm") version "2.2.20"; id("io.ktor.plugin") version "3.3.0" }
application { mainClass.set("AppKt") }
dependencies { implementation("io.ktor:ktor-server-netty:3.3.0") }
`

const manifest6 = `-- g.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><PropertyGroup><TargetFramework>net9.0</TargetFramework></PropertyGroup></Project>
`

func TestFollowed(t *testing.T) {
	t.Parallel()
	for _, c := range followed {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
