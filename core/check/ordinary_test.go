package check_test

import "testing"

// ordinary are programs as people write them, in one file or several. Each was
// run in the environments that stand beside it; what it did was read from the
// kernel.
var ordinary = []struct{ name, tree, want string }{
	{"Go: a command of the program", `-- Procfile --
web: ./gate serve --addr 127.0.0.1:8412
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"flag"
	"fmt"
	"net/http"
	"os"
)

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: gate serve|version")
		os.Exit(2)
	}
	switch os.Args[1] {
	case "serve":
		fs := flag.NewFlagSet("serve", flag.ExitOnError)
		addr := fs.String("addr", ":"+envOr("PORT", "8402"), "address to listen on")
		fs.Parse(os.Args[2:])
		if err := http.ListenAndServe(*addr, nil); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	case "version":
		fmt.Println("1.0")
	default:
		os.Exit(2)
	}
}

func envOr(key, def string) string {
	if v := os.Getenv(key); v != "" {
		return v
	}
	return def
}
`, ` => loopback 8412
PORT=5123 => loopback 8412
PORT= => loopback 8412`},
	{"Go: a file that a flag names", `-- Procfile --
web: ./gate -config local.json
-- go.mod --
module gate

go 1.25
-- local.json --
{"listen": {"host": "127.0.0.1", "port": 8402}}
-- main.go --
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"log"
	"net/http"
	"os"
	"strconv"
)

type Config struct {
	Listen struct {
		Host string ` + "`" + `json:"host"` + "`" + `
		Port int    ` + "`" + `json:"port"` + "`" + `
	} ` + "`" + `json:"listen"` + "`" + `
}

func readConfig(path string) (*Config, error) {
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	cfg := new(Config)
	if err := json.Unmarshal(data, cfg); err != nil {
		return nil, err
	}
	return cfg, nil
}

func main() {
	path := flag.String("config", "config.json", "settings")
	flag.Parse()
	cfg, err := readConfig(*path)
	if err != nil {
		log.Fatal(err)
	}
	if p, err := strconv.Atoi(os.Getenv("PORT")); err == nil {
		cfg.Listen.Port = p
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", cfg.Listen.Host, cfg.Listen.Port), nil))
}
`, ` => loopback 8402
PORT=5123 => loopback 5123`},
	{"Go: a function that looks up", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"log"
	"net"
	"net/http"
	"os"
	"strings"
)

type Config struct {
	Listen string
	Debug  bool
}

var defaults = Config{Listen: "0.0.0.0:8402"}

func FromEnv(lookup func(string) (string, bool)) Config {
	c := defaults
	if v, ok := lookup("GATE_LISTEN"); ok {
		c.Listen = v
	} else if v, ok := lookup("PORT"); ok {
		c.Listen = net.JoinHostPort("", strings.TrimSpace(v))
	}
	return c
}

func main() {
	cfg := FromEnv(os.LookupEnv)
	l, err := net.Listen("tcp", cfg.Listen)
	if err != nil {
		log.Fatal(err)
	}
	log.Fatal((&http.Server{}).Serve(l))
}
`, ` => any 8402
PORT=5123 => any 5123
GATE_LISTEN=127.0.0.1:5124 => loopback 5124`},
	{"Go: a key that is there sometimes", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"net/http"
	"os"
)

func main() {
	m := map[string]string{}
	if p, ok := os.LookupEnv("PORT"); ok {
		m["port"] = p
	}
	port, ok := m["port"]
	if !ok {
		port = "8401"
	}
	http.ListenAndServe("127.0.0.1:"+port, nil)
}
`, ` => loopback 8401
PORT=5123 => loopback 5123`},
	{"Go: a loop over a map that fills another", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"net/http"
	"os"
)

var settings = map[string]string{"host": "127.0.0.1", "port": "8401"}

func main() {
	for key, name := range map[string]string{"host": "HOST", "port": "PORT"} {
		if v := os.Getenv(name); v != "" {
			settings[key] = v
		}
	}
	http.ListenAndServe(settings["host"]+":"+settings["port"], nil)
}
`, ` => loopback 8401
PORT=5123 => loopback 5123`},
	{"Go: a pattern", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"regexp"
)

var digits = regexp.MustCompile(` + "`" + `^[0-9]+$` + "`" + `)

func main() {
	port := os.Getenv("PORT")
	if port == "" {
		port = "8400"
	}
	if !digits.MatchString(port) {
		log.Fatalf("bad port %q", port)
	}
	log.Fatal(http.ListenAndServe(":"+port, nil))
}
`, ` => any 8400
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Go: a port that is a type of its own", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"strconv"
)

var errPort = errors.New("port out of range")

type Port uint16

func ParsePort(s string) (Port, error) {
	n, err := strconv.Atoi(s)
	if err != nil {
		return 0, fmt.Errorf("parse port: %w", err)
	}
	if n < 1 || n > 65535 {
		return 0, errPort
	}
	return Port(n), nil
}

func (p Port) String() string { return strconv.Itoa(int(p)) }

func main() {
	s, ok := os.LookupEnv("PORT")
	if !ok {
		s = "8403"
	}
	port, err := ParsePort(s)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	l, err := net.Listen("tcp", net.JoinHostPort("0.0.0.0", port.String()))
	if err != nil {
		panic(err)
	}
	defer l.Close()
	panic(http.Serve(l, nil))
}
`, ` => any 8403
PORT=5123 => any 5123
PORT=99999 => exits`},
	{"Go: a server in a server", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"fmt"
	"net/http"
	"os"
)

type Server struct {
	*http.Server
	name string
}

func NewServer(name string) *Server {
	return &Server{name: name, Server: &http.Server{}}
}

func (s *Server) WithPort(port string) *Server {
	s.Addr = ":" + port
	return s
}

func main() {
	port := "8401"
	if v, ok := os.LookupEnv("PORT"); ok && len(v) > 0 {
		port = v
	}
	if err := NewServer("gate").WithPort(port).ListenAndServe(); err != nil {
		fmt.Println(err)
		os.Exit(1)
	}
}
`, ` => any 8401
PORT=5123 => any 5123
PORT= => any 8401`},
	{"Go: an address or a port", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"strings"
)

func addr() string {
	p := os.Getenv("PORT")
	switch {
	case p == "":
		return ":8401"
	case strings.Contains(p, ":"):
		return p
	default:
		return ":" + p
	}
}

func main() {
	log.Fatal(http.ListenAndServe(addr(), nil))
}
`, ` => any 8401
PORT=5123 => any 5123
PORT=:5124 => any 5124`},
	{"Go: an enumeration with a method", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"fmt"
	"log"
	"net/http"
	"os"
	"strconv"
)

type Environment int

const (
	Local Environment = iota
	Live
)

func environment() Environment {
	switch os.Getenv("ENV") {
	case "local", "dev":
		return Local
	default:
		return Live
	}
}

func (e Environment) Host() string {
	if e == Local {
		return "localhost"
	}
	return ""
}

func getInt(key string, fallback int) int {
	value, exists := os.LookupEnv(key)
	if !exists {
		return fallback
	}
	n, err := strconv.Atoi(value)
	if err != nil {
		return fallback
	}
	return n
}

func main() {
	addr := fmt.Sprintf("%s:%d", environment().Host(), getInt("PORT", 8404))
	log.Fatal(http.ListenAndServe(addr, nil))
}
`, ` => any 8404
PORT=5123 => any 5123
ENV=local => loopback 8404`},
	{"Go: an error that is handed back", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"os"
	"os/signal"
	"strconv"
	"syscall"
	"time"
)

type config struct {
	host            string
	port            int
	shutdownTimeout time.Duration
}

func loadConfig() (config, error) {
	cfg := config{host: "", port: 8401, shutdownTimeout: 5 * time.Second}
	if h, ok := os.LookupEnv("HOST"); ok {
		cfg.host = h
	}
	if p := os.Getenv("PORT"); p != "" {
		n, err := strconv.Atoi(p)
		if err != nil {
			return cfg, fmt.Errorf("PORT: %w", err)
		}
		cfg.port = n
	}
	return cfg, nil
}

func run(ctx context.Context) error {
	cfg, err := loadConfig()
	if err != nil {
		return err
	}
	mux := http.NewServeMux()
	mux.HandleFunc("GET /", func(w http.ResponseWriter, r *http.Request) { fmt.Fprint(w, "x") })
	srv := &http.Server{
		Addr:              fmt.Sprintf("%s:%d", cfg.host, cfg.port),
		Handler:           mux,
		ReadHeaderTimeout: 5 * time.Second,
	}
	errc := make(chan error, 1)
	go func() {
		slog.Info("listening", "addr", srv.Addr)
		errc <- srv.ListenAndServe()
	}()
	select {
	case err := <-errc:
		if !errors.Is(err, http.ErrServerClosed) {
			return err
		}
	case <-ctx.Done():
		sctx, cancel := context.WithTimeout(context.Background(), cfg.shutdownTimeout)
		defer cancel()
		return srv.Shutdown(sctx)
	}
	return nil
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := run(ctx); err != nil {
		slog.Error("exit", "err", err)
		os.Exit(1)
	}
}
`, ` => any 8401
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Go: embedded defaults in three packages", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- cmd/gate/main.go --
package main

import (
	"log"

	"gate/internal/config"
	"gate/internal/server"
)

func main() {
	cfg := config.MustLoad()
	log.Fatal(server.New(cfg).Start())
}
-- internal/config/config.go --
package config

import (
	"encoding/json"
	_ "embed"
	"os"
)

//go:embed defaults.json
var defaults []byte

type Config struct {
	Env  string ` + "`" + `json:"env"` + "`" + `
	HTTP struct {
		Host string ` + "`" + `json:"host"` + "`" + `
		Port string ` + "`" + `json:"port"` + "`" + `
	} ` + "`" + `json:"http"` + "`" + `
}

func MustLoad() *Config {
	var c Config
	if err := json.Unmarshal(defaults, &c); err != nil {
		panic(err)
	}
	if v := os.Getenv("GATE_ENV"); v != "" {
		c.Env = v
	}
	if c.Env == "production" {
		c.HTTP.Host = "0.0.0.0"
	}
	if v := os.Getenv("PORT"); v != "" {
		c.HTTP.Port = v
	}
	return &c
}
-- internal/config/defaults.json --
{"env": "dev", "http": {"host": "127.0.0.1", "port": "8403"}}
-- internal/server/server.go --
package server

import (
	"net"
	"net/http"

	"gate/internal/config"
)

type Server struct {
	cfg *config.Config
	mux *http.ServeMux
}

func New(cfg *config.Config) *Server {
	s := &Server{cfg: cfg, mux: http.NewServeMux()}
	s.routes()
	return s
}

func (s *Server) routes() {
	s.mux.HandleFunc("/healthz", func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(200) })
}

func (s *Server) Start() error {
	addr := net.JoinHostPort(s.cfg.HTTP.Host, s.cfg.HTTP.Port)
	ln, err := net.Listen("tcp4", addr)
	if err != nil {
		return err
	}
	return http.Serve(ln, s.mux)
}
`, ` => loopback 8403
PORT=5123 => loopback 5123
GATE_ENV=production PORT=5123 => any 5123`},
	{"Go: flags put into fields by a method", `-- Procfile --
web: ./gate -port 8411
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"flag"
	"fmt"
	"log"
	"net/http"
	"os"
)

type options struct {
	host string
	port string
}

func (o *options) register(fs *flag.FlagSet) {
	fs.StringVar(&o.host, "host", "127.0.0.1", "host")
	fs.StringVar(&o.port, "port", "8401", "port")
}

func (o options) addr() string { return fmt.Sprintf("%s:%s", o.host, o.port) }

func main() {
	var o options
	o.register(flag.CommandLine)
	flag.Parse()
	if p := os.Getenv("PORT"); p != "" {
		o.port = p
	}
	log.Fatal(http.ListenAndServe(o.addr(), nil))
}
`, ` => loopback 8411
PORT=5123 => loopback 5123`},
	{"Go: options that are there sometimes", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"context"
	"net"
	"net/http"
	"os"
)

type Option func(*server)

type server struct {
	host, port string
	handler    http.Handler
}

func WithPort(p string) Option { return func(s *server) { s.port = p } }
func WithHost(h string) Option { return func(s *server) { s.host = h } }

func New(opts ...Option) *server {
	s := &server{host: "127.0.0.1", port: "8403", handler: http.NewServeMux()}
	for _, opt := range opts {
		opt(s)
	}
	return s
}

func (s *server) Serve(ctx context.Context) error {
	lc := net.ListenConfig{}
	l, err := lc.Listen(ctx, "tcp", net.JoinHostPort(s.host, s.port))
	if err != nil {
		return err
	}
	return http.Serve(l, s.handler)
}

func main() {
	var opts []Option
	if p := os.Getenv("PORT"); p != "" {
		opts = append(opts, WithPort(p), WithHost(""))
	}
	if err := New(opts...).Serve(context.Background()); err != nil {
		os.Exit(1)
	}
}
`, ` => loopback 8403
PORT=5123 => any 5123
PORT= => loopback 8403`},
	{"Go: options that change a server", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"cmp"
	"log"
	"net/http"
	"os"
	"time"
)

func newServer(h http.Handler, opts ...func(*http.Server)) *http.Server {
	s := &http.Server{Handler: h, Addr: ":8402", ReadTimeout: time.Second}
	for _, o := range opts {
		o(s)
	}
	return s
}

func withAddr(addr string) func(*http.Server) {
	return func(s *http.Server) {
		if addr != "" {
			s.Addr = addr
		}
	}
}

func addrFromPort() string {
	if p := os.Getenv("PORT"); p != "" {
		return ":" + p
	}
	return ""
}

func main() {
	addr := cmp.Or(os.Getenv("HTTP_ADDR"), addrFromPort())
	srv := newServer(http.NewServeMux(), withAddr(addr))
	if err := srv.ListenAndServe(); err != nil && err != http.ErrServerClosed {
		log.Fatalf("listen: %v", err)
	}
}
`, ` => any 8402
PORT=5123 => any 5123
HTTP_ADDR=127.0.0.1:5124 PORT=5123 => loopback 5124`},
	{"Go: services in a list", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"log"
	"net/http"
	"os"
	"strconv"
)

type service struct {
	name string
	addr string
}

func main() {
	port, err := strconv.Atoi(os.Getenv("PORT"))
	if err != nil {
		port = 8402
	}
	services := []service{{"web", ":" + strconv.Itoa(port)}}
	if os.Getenv("ADMIN") == "1" {
		services = append(services, service{"admin", "127.0.0.1:9402"})
	}
	errs := make(chan error)
	for _, s := range services {
		go func(s service) {
			errs <- http.ListenAndServe(s.addr, nil)
		}(s)
	}
	log.Fatal(<-errs)
}
`, ` => any 8402
PORT=5123 => any 5123`},
	{"Go: settings that are made once", `-- Procfile --
web: ./gate
-- go.mod --
module gate

go 1.25
-- main.go --
package main

import (
	"gate/app"
	"gate/config"
)

func main() {
	app.New(config.Get()).Run()
}
-- config/config.go --
package config

import (
	"os"
	"sync"
)

type Settings struct {
	Env  string
	Host string
	Port string
}

var (
	once     sync.Once
	settings Settings
)

func Get() Settings {
	once.Do(func() {
		settings = Settings{
			Env:  get("APP_ENV", "development"),
			Host: "127.0.0.1",
			Port: get("PORT", "8401"),
		}
		if settings.Env == "production" {
			settings.Host = "0.0.0.0"
		}
	})
	return settings
}

func get(key, def string) string {
	v := os.Getenv(key)
	if len(v) == 0 {
		return def
	}
	return v
}
-- app/app.go --
package app

import (
	"log"
	"net/http"

	"gate/config"
)

type App struct {
	settings config.Settings
	router   *http.ServeMux
}

func New(s config.Settings) *App {
	a := &App{settings: s}
	a.router = http.NewServeMux()
	return a
}

func (a *App) addr() string {
	return a.settings.Host + ":" + a.settings.Port
}

func (a *App) Run() {
	log.Printf("listening on %s", a.addr())
	log.Fatal(http.ListenAndServe(a.addr(), a.router))
}
`, ` => loopback 8401
PORT=5123 => loopback 5123
APP_ENV=production PORT=5123 => any 5123`},
	{"Java: a builder", `-- Procfile --
web: java -cp target/classes g.Main
` + jar + `-- src/main/java/g/Main.java --
package g;

import java.io.IOException;
import java.net.*;
import java.util.Objects;

public class Main {
    private final InetSocketAddress address;

    private Main(Builder builder) {
        this.address = new InetSocketAddress(builder.host, builder.port);
    }

    static class Builder {
        private String host = "127.0.0.1";
        private int port = 8502;

        Builder host(String host) {
            this.host = Objects.requireNonNull(host);
            return this;
        }

        Builder port(String text) {
            if (text != null) {
                try {
                    this.port = Integer.parseInt(text);
                } catch (NumberFormatException e) {
                    throw new IllegalStateException("PORT", e);
                }
            }
            return this;
        }

        Main build() {
            return new Main(this);
        }
    }

    void serve() throws IOException {
        try (ServerSocket socket = new ServerSocket()) {
            socket.bind(address);
            for (;;) socket.accept().close();
        }
    }

    public static void main(String[] args) throws IOException {
        new Builder().host("0.0.0.0").port(System.getenv("PORT")).build().serve();
    }
}
`, ` => any 8502
PORT=5123 => any 5123
PORT=x => exits`},
	{"Java: a loop over keys that fills a map", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import java.net.*;
import java.util.*;

public class Main {
    public static void main(String[] args) throws Exception {
        Map<String, String> conf = new HashMap<>(Map.of("host", "127.0.0.1", "port", "8501"));
        for (String key : conf.keySet()) {
            String v = System.getenv(key.toUpperCase());
            if (v != null) conf.put(key, v);
        }
        conf.putIfAbsent("backlog", "10");
        ServerSocket s = new ServerSocket(Integer.parseInt(conf.get("port")), 10, InetAddress.getByName(conf.get("host")));
        while (true) s.accept().close();
    }
}
`, ` => loopback 8501
PORT=5123 => loopback 5123`},
	{"Java: a matcher", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import java.net.ServerSocket;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

public class Main {
    private static final Pattern PORT = Pattern.compile("(\\d+)");

    public static void main(String[] args) throws Exception {
        String raw = System.getenv().getOrDefault("PORT", "8500");
        Matcher m = PORT.matcher(raw);
        if (!m.matches()) {
            System.err.println("bad port");
            System.exit(1);
        }
        try (ServerSocket s = new ServerSocket(Integer.parseInt(m.group(1)))) {
            while (true) s.accept().close();
        }
    }
}
`, ` => any 8500
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Java: a port that falls back", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Gate.java --
package g;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;

public class Gate implements Runnable {
    private static int portOrDefault(String value, int fallback) {
        try {
            return Integer.parseInt(value);
        } catch (NumberFormatException e) {
            System.err.println("using the default port");
            return fallback;
        }
    }

    private final int port = portOrDefault(System.getenv("PORT"), 8502);

    @Override
    public void run() {
        try (ServerSocket server = new ServerSocket(port)) {
            while (!Thread.currentThread().isInterrupted()) {
                try (Socket s = server.accept()) {
                    s.getOutputStream().write('x');
                }
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    public static void main(String[] args) {
        new Thread(new Gate(), "gate").start();
    }
}
`, ` => any 8502
PORT=5123 => any 5123
PORT= => any 8502`},
	{"Java: a record of settings", `-- Procfile --
web: java -Dgate.port=8512 -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;

public class Main {
    record Settings(String host, int port) {
        static Settings load() {
            return new Settings(env("GATE_HOST", "0.0.0.0"), Integer.getInteger("gate.port", Integer.parseInt(env("PORT", "8502"))));
        }

        private static String env(String name, String fallback) {
            String value = System.getenv(name);
            return value == null || value.isBlank() ? fallback : value.trim();
        }
    }

    public static void main(String[] args) throws Exception {
        Settings settings = Settings.load();
        try (ServerSocketChannel channel = ServerSocketChannel.open()) {
            channel.bind(new InetSocketAddress(settings.host(), settings.port()));
            while (true) {
                try (SocketChannel client = channel.accept()) {
                    client.finishConnect();
                }
            }
        }
    }
}
`, ` => any 8512
PORT=5123 => any 8512
GATE_HOST=127.0.0.1 => loopback 8512`},
	{"Java: a record over a function", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.Optional;

public class Main {
    static final int DEFAULT_PORT = 8501;

    record Env(java.util.function.Function<String, String> lookup) {
        Optional<String> get(String key) {
            return Optional.ofNullable(lookup.apply(key)).map(String::trim).filter(s -> !s.isEmpty());
        }

        int getInt(String key, int fallback) {
            return get(key).map(Integer::valueOf).orElse(fallback);
        }
    }

    public static void main(String[] args) throws Exception {
        Env env = new Env(System::getenv);
        var server = HttpServer.create(new InetSocketAddress(env.get("HOST").orElse("0.0.0.0"), env.getInt("PORT", DEFAULT_PORT)), 0);
        server.createContext("/", ex -> ex.close());
        server.start();
    }
}
`, ` => any 8501
PORT=5123 => any 5123
PORT= => any 8501`},
	{"Java: an abstract service", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/App.java --
package g;

import java.net.*;

abstract class Service {
    abstract int port();
    protected String host() { return "0.0.0.0"; }
    void start() throws Exception {
        ServerSocket s = new ServerSocket();
        s.setReuseAddress(true);
        s.bind(new InetSocketAddress(host(), port()));
        while (true) s.accept().close();
    }
}

public class App extends Service {
    @Override int port() {
        String raw = System.getenv("PORT");
        if (raw == null) return 8503;
        int port = Integer.parseInt(raw);
        if (port < 1 || port > 65535) throw new IllegalArgumentException("PORT");
        return port;
    }
    public static void main(String... args) throws Exception { new App().start(); }
}
`, ` => any 8503
PORT=5123 => any 5123
PORT=0 => exits`},
	{"Java: arguments, else the environment", `-- Procfile --
web: java -jar target/gate.jar 8511
` + jar + `-- src/main/java/g/App.java --
package g;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Map;

public final class App {
    private final Config config;

    App(Config config) {
        this.config = config;
    }

    void start() throws Exception {
        InetSocketAddress address = config.isPublic()
                ? new InetSocketAddress(config.getPort())
                : new InetSocketAddress(InetAddress.getLoopbackAddress(), config.getPort());
        HttpServer server = HttpServer.create(address, 0);
        server.createContext("/", e -> e.close());
        server.start();
    }

    public static void main(String[] args) throws Exception {
        new App(Config.from(args, System.getenv())).start();
    }
}
-- src/main/java/g/Config.java --
package g;

import java.util.Map;

class Config {
    private static final int DEFAULT_PORT = 8501;
    private final int port;
    private final boolean isPublic;

    private Config(int port, boolean isPublic) {
        this.port = port;
        this.isPublic = isPublic;
    }

    static Config from(String[] args, Map<String, String> env) {
        int port = DEFAULT_PORT;
        if (env.containsKey("PORT")) {
            port = Integer.parseInt(env.get("PORT"));
        } else if (args.length > 0) {
            port = Integer.parseInt(args[0]);
        }
        boolean isPublic = !"local".equals(env.getOrDefault("MODE", "public"));
        return new Config(port, isPublic);
    }

    int getPort() {
        return port;
    }

    boolean isPublic() {
        return isPublic;
    }
}
`, ` => any 8511
PORT=5123 => any 5123`},
	{"Java: constants that read the variable of their name", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/App.java --
package g;

import java.net.InetAddress;
import java.net.ServerSocket;

public class App {
    enum Setting {
        PORT("8502"),
        HOST("127.0.0.1");

        private final String fallback;

        Setting(String fallback) {
            this.fallback = fallback;
        }

        String value() {
            String v = System.getenv(name());
            return v == null || v.isEmpty() ? fallback : v;
        }

        int asInt() {
            return Integer.parseInt(value());
        }
    }

    public static void main(String[] args) throws Exception {
        try (var server = new ServerSocket(Setting.PORT.asInt(), 50, InetAddress.getByName(Setting.HOST.value()))) {
            for (;;) server.accept().close();
        }
    }
}
`, ` => loopback 8502
PORT=5123 => loopback 5123
PORT= => loopback 8502`},
	{"Java: one of two tasks", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import java.net.ServerSocket;

public class Main {
    interface Task { void run() throws Exception; }

    static class Web implements Task {
        private final int port;
        Web(int port) { this.port = port; }
        public void run() throws Exception {
            try (ServerSocket s = new ServerSocket(port)) {
                while (true) s.accept().close();
            }
        }
    }

    static class Batch implements Task {
        public void run() { System.out.println("done"); }
    }

    static Task task(String mode) {
        return switch (mode) {
            case "web" -> new Web(Integer.parseInt(System.getenv().getOrDefault("PORT", "8502")));
            case "batch" -> new Batch();
            default -> throw new IllegalArgumentException(mode);
        };
    }

    public static void main(String[] args) throws Exception {
        String mode = System.getenv("MODE");
        task(mode != null ? mode : "web").run();
    }
}
`, ` => any 8502
PORT=5123 => any 5123
MODE=batch => skipped`},
	{"Java: options in a map", `-- Procfile --
web: java -jar target/gate.jar --port=8511
` + jar + `-- src/main/java/g/App.java --
package g;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.Map;

public class App {
    static Map<String, String> parse(String[] args) {
        Map<String, String> options = new HashMap<>();
        for (String arg : args) {
            if (arg.startsWith("--")) {
                String[] parts = arg.substring(2).split("=", 2);
                options.put(parts[0], parts.length > 1 ? parts[1] : "true");
            }
        }
        return options;
    }

    public static void main(String[] args) throws Exception {
        Map<String, String> options = parse(args);
        String port = options.getOrDefault("port", System.getenv().getOrDefault("PORT", "8501"));
        HttpServer server = HttpServer.create(new InetSocketAddress(Integer.parseInt(port)), 0);
        server.start();
    }
}
`, ` => any 8511
PORT=5123 => any 8511`},
	{"Java: properties behind a constant", `-- Procfile --
web: java -jar target/gate.jar
` + jar + `-- src/main/java/g/Main.java --
package g;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.util.Optional;
import java.util.Properties;
import java.util.concurrent.Executors;

public class Main {
    private static final String DEFAULTS = "/application.properties";

    public static void main(String[] args) throws IOException {
        Properties properties = new Properties();
        try (InputStream in = Main.class.getResourceAsStream(DEFAULTS)) {
            properties.load(in);
        }
        int port = Optional.ofNullable(System.getenv("PORT"))
                .map(Integer::parseInt)
                .orElseGet(() -> Integer.parseInt(properties.getProperty("server.port", "8080")));
        String host = properties.getProperty("server.host");
        HttpServer server = HttpServer.create(new InetSocketAddress(host, port), 0);
        server.createContext("/", exchange -> {
            exchange.sendResponseHeaders(200, -1);
            exchange.close();
        });
        server.setExecutor(Executors.newFixedThreadPool(4));
        server.start();
    }
}
-- src/main/resources/application.properties --
server.port=8501
server.host=0.0.0.0
`, ` => any 8501
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Node.js: a container and a class over the environment", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate"}
-- index.js --
const { createApp } = require("./app");
const container = require("./container");

const app = createApp(container);
app.start();
-- container.js --
const config = require("./config");
const logger = { info() {} };
module.exports = { config, logger };
-- config.js --
class Config {
  constructor(env) {
    this.env = env;
  }
  get(name, fallback) {
    return this.env[name] !== undefined ? this.env[name] : fallback;
  }
  get port() {
    return parseInt(this.get("PORT", "3601"), 10);
  }
}
module.exports = new Config(process.env);
-- app.js --
const http = require("http");
exports.createApp = ({ config, logger }) => {
  const server = http.createServer((req, res) => res.end("x"));
  return {
    start() {
      server.listen(config.port, () => logger.info("up"));
      return server;
    },
  };
};
`, ` => any 3601
PORT=5123 => any 5123
PORT= => exits`},
	{"Node.js: a file of the stage", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate"}
-- index.js --
const fs = require("fs");
const path = require("path");
const http = require("http");

const env = process.env.APP_ENV || "local";
const file = path.join(__dirname, "settings", ` + "`" + `${env}.json` + "`" + `);
const settings = JSON.parse(fs.readFileSync(file, "utf8"));

http.createServer((req, res) => res.end("x")).listen(process.env.PORT || settings.port, settings.host);
-- settings/local.json --
{"port": 3201, "host": "127.0.0.1"}
-- settings/staging.json --
{"port": 3202, "host": "0.0.0.0"}
`, ` => loopback 3201
PORT=5123 => loopback 5123
APP_ENV=staging => any 3202`},
	{"Node.js: a function that casts", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const http = require("http");
const env = (key, { fallback, as = String } = {}) => {
  const value = process.env[key] ?? fallback;
  if (value === undefined) throw new Error(` + "`" + `${key} is not set` + "`" + `);
  return as(value);
};
http.createServer().listen(env("PORT", { as: Number, fallback: 5001 }), env("ADDR", { fallback: "::" }));
`, ` => any 5001
PORT=5123 => any 5123
PORT= => any 0`},
	{"Node.js: a key that is asked for", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const options = {};
if (process.env.PORT) options.port = process.env.PORT;
const port = "port" in options ? options.port : 3002;
require("http").createServer().listen(port);
`, ` => any 3002
PORT=5123 => any 5123
PORT= => any 3002`},
	{"Node.js: a loop over names that fills an object", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const config = {};
["PORT", "HOST"].forEach((name) => { if (process.env[name]) config[name.toLowerCase()] = process.env[name]; });
require("http").createServer().listen(config.port || 3002, config.host);
`, ` => any 3002
PORT=5123 => any 5123
PORT= => any 3002`},
	{"Node.js: a loop that listens", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const http = require("http");
const handler = (req, res) => res.end("x");
const listeners = [{ name: "http", port: Number(process.env.PORT || 3801), host: "0.0.0.0" }];
if (process.env.SSL === "on") {
  listeners.push({ name: "admin", port: 3899, host: "127.0.0.1" });
}
listeners.forEach(({ port, host }) => http.createServer(handler).listen(port, host));
`, ` => any 3801
PORT=5123 => any 5123`},
	{"Node.js: a module of one of several environments", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate","dependencies":{"koa":"3.0.0"}}
-- index.js --
const Koa = require("koa");
const config = require("./config")[process.env.APP_ENV || "development"];

const app = new Koa();
app.use(async (ctx) => {
  ctx.body = "x";
});

if (!module.parent) {
  app.listen(config.port, config.hostname);
}
-- config.js --
const common = { name: "gate", hostname: "0.0.0.0" };

module.exports = {
  development: { ...common, port: 3400, hostname: "127.0.0.1" },
  staging: { ...common, port: process.env.PORT },
  production: { ...common, port: process.env.PORT || 80 + 8000 },
};
`, ` => loopback 3400
PORT=5123 APP_ENV=staging => any 5123
APP_ENV=production => any 8080`},
	{"Node.js: a number that is asserted", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const assert = require("node:assert");
const { createServer } = require("node:http");

function port(value = process.env.PORT) {
  if (value == null || value === "") return 5001;
  const n = Number(value);
  assert(Number.isInteger(n) && n > 0 && n < 65536, ` + "`" + `invalid port: ${value}` + "`" + `);
  return n;
}

async function main() {
  const server = createServer((_req, res) => res.end("x"));
  await new Promise((done) => server.listen(port(), "0.0.0.0", done));
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
`, ` => any 5001
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Node.js: a pattern", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const NUM = /^\d{2,5}$/;
const raw = process.env.PORT || "";
if (raw && !NUM.test(raw)) { console.error("no"); process.exit(1); }
require("http").createServer().listen(raw.match(NUM) ? Number(raw) : 3000);
`, ` => any 3000
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Node.js: a place among the arguments", `-- Procfile --
web: npm start
-- package.json --
{"name":"gate","scripts":{"prestart":"node -e \"1\"","start":"node --no-warnings server.js -- --port 4001"}}
-- server.js --
const args = process.argv.slice(2);
const get = (flag, fallback) => {
  const at = args.indexOf(flag);
  return at >= 0 ? args[at + 1] : fallback;
};
require("http").createServer().listen(process.env.PORT || get("--port", 4002));
`, ` => any 4001
PORT=5123 => any 5123`},
	{"Node.js: a port out of range", `-- Procfile --
web: node server.mjs
-- package.json --
{"name":"gate"}
-- server.mjs --
import { createServer } from "node:http";
import process from "node:process";

const MIN = 1024;
const MAX = 65535;

function getPort() {
  const raw = process.env.PORT;
  const value = raw ? Number(raw) : 3301;
  if (!Number.isInteger(value) || value < MIN || value > MAX) {
    console.warn("port out of range, using the default");
    return 3302;
  }
  return value;
}

const server = createServer((req, res) => res.end("x"));
server.listen({ port: getPort(), host: "::" });
`, ` => any 3301
PORT=5123 => any 5123
PORT=99999 => any 3302`},
	{"Node.js: a prefix and a reduction", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate"}
-- index.js --
const defaults = { port: 3501, host: "0.0.0.0" };

function fromEnv(prefix, spec) {
  return Object.keys(spec).reduce((config, key) => {
    const value = process.env[` + "`" + `${prefix}_${key.toUpperCase()}` + "`" + `];
    return value === undefined ? config : { ...config, [key]: typeof spec[key] === "number" ? Number(value) : value };
  }, { ...spec });
}

const { port, host } = fromEnv("SERVER", defaults);
require("http").createServer().listen(port, host);
`, ` => any 3501
PORT=5123 => any 3501
SERVER_PORT=5124 SERVER_HOST=127.0.0.1 => loopback 5124`},
	{"Node.js: a property that is made of itself", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const config = { port: 3000 };
config.port = process.env.PORT || config.port;
config.port = Number(config.port);
config.port += 1;
require("http").createServer().listen(config.port);
`, ` => any 3001
PORT=5123 => any 5124
PORT= => any 3001`},
	{"Node.js: a script that sets a variable", `-- Procfile --
web: sh ./start.sh
-- package.json --
{"name":"gate"}
-- start.sh --
#!/bin/sh
set -e
export NODE_ENV="${NODE_ENV:-production}"
if [ -z "$PORT" ]; then
  PORT=4301
  export PORT
fi
echo "starting on $PORT"
exec node server.js --port "$PORT"
-- server.js --
const http = require("http");
const i = process.argv.indexOf("--port");
const port = i === -1 ? process.env.PORT : process.argv[i + 1];
http.createServer().listen(Number(port), process.env.NODE_ENV === "production" ? "0.0.0.0" : "127.0.0.1");
`, ` => any 4301
PORT=5123 => any 5123`},
	{"Node.js: a switch that may throw", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"express":"5.0.0"}}
-- server.js --
const express = require("express");
const app = express();

let port = 3000;
let host;

switch (process.env.NODE_ENV) {
  case "production":
    if (!process.env.PORT) {
      throw new Error("PORT is required in production");
    }
    port = Number(process.env.PORT);
    break;
  case "test":
    port = 0;
    break;
  default:
    host = "localhost";
    port = Number(process.env.PORT) || port;
}

app.listen(port, host);
`, ` => loopback 3000
PORT=5123 => loopback 5123
NODE_ENV=production PORT=5124 => any 5124
NODE_ENV=production => exits`},
	{"Node.js: an address that a class reads", `-- Procfile --
web: node app.js
-- package.json --
{"name":"gate"}
-- app.js --
const http = require("node:http");

class Endpoint {
  constructor(host, port) {
    this.host = host;
    this.port = port;
  }

  static parse(text, { defaultHost = "0.0.0.0", defaultPort = 3700 } = {}) {
    if (!text) return new Endpoint(defaultHost, defaultPort);
    const [host, port] = text.split(":");
    return new Endpoint(host || defaultHost, Number(port) || defaultPort);
  }

  toString() {
    return ` + "`" + `${this.host}:${this.port}` + "`" + `;
  }
}

const endpoint = Endpoint.parse(process.env.LISTEN, { defaultPort: process.env.PORT });
const server = http.createServer((req, res) => {
  res.writeHead(200, { "content-type": "text/plain" });
  res.end("x");
});
server.listen(endpoint.port, endpoint.host, () => console.log(` + "`" + `listening on ${endpoint}` + "`" + `));
`, ` => any 3700
PORT=5123 => any 5123
LISTEN=127.0.0.1:5124 => loopback 5124`},
	{"Node.js: an application and its settings in folders", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"gate","version":"1.0.0","main":"src/index.js","scripts":{"start":"node src/index.js"},"dependencies":{"express":"5.0.0","dotenv":"17.0.0"}}
-- .env --
PORT=4100
HOST=localhost
-- src/index.js --
require("dotenv").config();
const app = require("./app");
const logger = require("./lib/logger");
const { server: settings } = require("./config");

const server = app.listen(settings.port, settings.host, () => {
  const { address, port } = server.address();
  logger.info(` + "`" + `gate listens on ${address}:${port}` + "`" + `);
});

for (const signal of ["SIGTERM", "SIGINT"]) {
  process.on(signal, () => server.close(() => process.exit(0)));
}
-- src/app.js --
const express = require("express");
const app = express();
app.use(express.json());
app.get("/", (req, res) => res.json({ ok: true }));
module.exports = app;
-- src/lib/logger.js --
exports.info = (...args) => console.log(new Date().toISOString(), ...args);
-- src/config/index.js --
const toInt = (value, fallback) => {
  const n = Number.parseInt(value, 10);
  return Number.isNaN(n) ? fallback : n;
};

module.exports = {
  server: {
    port: toInt(process.env.PORT, 3000),
    host: process.env.HOST || "0.0.0.0",
  },
  db: { url: process.env.DATABASE_URL },
};
`, ` => loopback 4100
PORT=5123 => loopback 5123
PORT= => loopback 3000`},
	{"Node.js: convict", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"convict":"6.0.0"}}
-- config.js --
const convict = require("convict");
const config = convict({
  env: { format: ["production", "development", "test"], default: "development", env: "NODE_ENV" },
  ip: { doc: "address", format: "*", default: "0.0.0.0", env: "ADDR" },
  port: { doc: "port", format: "port", default: 5101, env: "PORT", arg: "port" },
});
config.validate({ allowed: "strict" });
module.exports = config;
-- server.js --
const config = require("./config");
require("http").createServer().listen(config.get("port"), config.get("ip"));
`, ` => any 5101
PORT=5123 => any 5123
PORT=5123 ADDR=127.0.0.1 => loopback 5123`},
	{"Node.js: defaults of a constructor", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate","dependencies":{"express":"5.0.0"}}
-- index.js --
const express = require("express");

class Gate {
  constructor({ port = process.env.PORT || 3101, host = process.env.HOST || "0.0.0.0" } = {}) {
    this.port = Number(port);
    this.host = host;
    this.app = express();
    this.routes();
  }

  routes() {
    this.app.get("/", (req, res) => res.send("x"));
  }

  async start() {
    return new Promise((resolve) => {
      this.server = this.app.listen(this.port, this.host, () => resolve(this));
    });
  }
}

new Gate().start().then(({ port }) => console.log(port));
`, ` => any 3101
PORT=5123 => any 5123
PORT= => any 3101`},
	{"Node.js: entries of a map", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const settings = require("./settings");
settings.load();
require("http").createServer().listen(settings.get("port"), settings.get("host"));
-- settings.js --
const values = new Map([["host", "0.0.0.0"], ["port", 3901]]);
exports.load = () => {
  if (process.env.PORT) values.set("port", Number(process.env.PORT));
};
exports.get = (name) => values.get(name);
`, ` => any 3901
PORT=5123 => any 5123`},
	{"Node.js: groups of a pattern", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const m = /^(?:([\w.]+):)?(\d+)$/.exec(process.env.ADDR || "0.0.0.0:3000");
const [, host = "127.0.0.1", port] = m;
require("http").createServer().listen(Number(port), host);
`, `ADDR=localhost:5123 => loopback 5123
ADDR=5124 => loopback 5124
 => any 3000`},
	{"Node.js: layers of settings that are asked for as a whole", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate","dependencies":{"config":"4.0.0","express":"5.0.0"}}
-- config/default.json --
{"server":{"port":4101,"host":"127.0.0.1"}}
-- config/production.json --
{"server":{"host":"0.0.0.0"}}
-- config/custom-environment-variables.json --
{"server":{"port":{"__name":"PORT","__format":"number"}}}
-- index.js --
const config = require("config");
const app = require("express")();
const { port, host } = config.get("server");
app.listen(port, host);
`, ` => loopback 4101
PORT=5123 => loopback 5123
NODE_ENV=production => any 4101`},
	{"Node.js: minimist", `-- Procfile --
web: node main.js --host 0.0.0.0
-- package.json --
{"name":"gate","dependencies":{"minimist":"1.2.8"}}
-- main.js --
const argv = require("minimist")(process.argv.slice(2), {
  string: ["host"],
  alias: { p: "port", h: "host" },
  default: { port: process.env.PORT || 3401, host: "127.0.0.1" },
});
require("http").createServer().listen(argv.port, argv.host);
`, ` => any 3401
PORT=5123 => any 5123`},
	{"Node.js: one of several roles", `-- Procfile --
web: node index.js
-- package.json --
{"name":"gate"}
-- index.js --
const roles = {
  web: () => require("./web").start(),
  worker: () => require("./worker").start(),
};
const role = roles[process.env.MODE || "web"];
if (!role) throw new Error("unknown mode");
role();
-- web.js --
exports.start = () => require("http").createServer().listen(process.env.PORT || 4901);
-- worker.js --
exports.start = () => { console.log("working"); };
`, ` => any 4901
PORT=5123 => any 5123
MODE=worker => skipped`},
	{"Node.js: one of two objects of options", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const http = require("http");
const server = http.createServer((q, r) => r.end("x"));
const { PORT, NODE_ENV } = process.env;
const isDev = NODE_ENV !== "production";
const opts = isDev ? { port: PORT || 3501, host: "localhost" } : { port: PORT };
server.listen(opts);
`, ` => loopback 3501
PORT=5123 => loopback 5123
LISTEN_FDS=1 => loopback 3501`},
	{"Node.js: private fields and a static getter", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"socket.io":"4.0.0"}}
-- server.js --
const { Server } = require("socket.io");
const { createServer } = require("node:http");

class LiveServer {
  #io;
  #http;
  constructor(options = {}) {
    this.port = options.port || LiveServer.defaultPort;
    this.#http = createServer();
    this.#io = new Server(this.#http, { cors: { origin: "*" } });
  }
  static get defaultPort() {
    return Number(process.env.PORT || 4701);
  }
  start() {
    this.#io.on("connection", (s) => s.emit("x"));
    this.#http.listen(this.port);
    return this;
  }
}

new LiveServer({}).start();
`, ` => any 4701
PORT=5123 => any 5123
PORT= => any 4701`},
	{"Node.js: processes of a cluster", `-- Procfile --
web: node main.js
-- package.json --
{"name":"gate"}
-- main.js --
const cluster = require("cluster");
const http = require("http");
const workers = Number(process.env.WEB_CONCURRENCY || 2);
const port = process.env.PORT || 3900;

if (cluster.isPrimary && workers > 1) {
  for (let i = 0; i < workers; i++) cluster.fork();
  cluster.on("exit", () => cluster.fork());
} else {
  http.createServer((req, res) => res.end("x")).listen(port);
}
`, ` => any 3900
PORT=5123 => any 5123
WEB_CONCURRENCY=1 PORT=5124 => any 5124`},
	{"Node.js: settings made of the environment that is handed over", `-- Procfile --
web: npm start
-- package.json --
{"name":"gate","type":"module","scripts":{"start":"NODE_ENV=production node server.mjs"},"dependencies":{"fastify":"5.0.0"}}
-- server.mjs --
import Fastify from "fastify";
import { loadConfig } from "./config.mjs";

const config = loadConfig(process.env);
const app = Fastify({ logger: config.isProduction });

app.get("/", async () => ({ hello: "dome" }));
app.get("/healthz", { logLevel: "warn" }, async () => "ok");

try {
  const address = await app.listen(config.listen);
  app.log.info(address);
} catch (err) {
  app.log.error(err);
  process.exit(1);
}
-- config.mjs --
export function loadConfig(env) {
  const isProduction = env.NODE_ENV === "production";
  return {
    isProduction,
    listen: {
      port: Number(env.PORT || (isProduction ? 8080 : 3000)),
      host: isProduction ? "0.0.0.0" : "localhost",
    },
  };
}
`, ` => any 8080
PORT=5123 => any 5123
PORT= => any 8080`},
	{"Node.js: settings that are picked", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate","dependencies":{"koa":"3.0.0"}}
-- server.js --
const Koa = require("koa");
const app = new Koa();
app.use((ctx) => (ctx.body = "x"));
module.exports = app;

const config = Object.assign({ port: 4901, host: "0.0.0.0" }, require("./local.json"), pick(process.env, { PORT: "port", HOST: "host" }));

function pick(from, names) {
  const out = {};
  for (const [key, name] of Object.entries(names)) {
    if (from[key]) out[name] = from[key];
  }
  return out;
}

app.listen(config.port, config.host);
-- local.json --
{"host": "127.0.0.1"}
`, ` => loopback 4901
PORT=5123 => loopback 5123
PORT= => loopback 4901`},
	{"Node.js: settings that are spread by name", `-- Procfile --
web: node src/index.js
-- package.json --
{"name":"gate","type":"module","dependencies":{"koa":"3.0.0"}}
-- src/index.js --
import Koa from "koa";
import config from "./config/index.js";

export const app = new Koa();
app.use((ctx) => { ctx.body = "x"; });

if (config.env !== "test") {
  app.listen(config.port, () => console.log("up"));
}

export default app;
-- src/config/index.js --
import development from "./development.js";
import production from "./production.js";
import testing from "./test.js";

const env = process.env.NODE_ENV ?? "development";
const all = { development, production, test: testing };

export default { env, ...all[env] };
-- src/config/development.js --
export default { port: 3301 };
-- src/config/production.js --
export default { port: Number(process.env.PORT) };
-- src/config/test.js --
export default { port: 0 };
`, ` => any 3301
PORT=5123 => any 3301
PORT=5123 NODE_ENV=test => skipped`},
	{"Node.js: the action of a command", `-- Procfile --
web: node cli.js start --port 4511
-- package.json --
{"name":"gate","dependencies":{"commander":"14.0.0"}}
-- cli.js --
const { Command } = require("commander");
const { startServer } = require("./server");

const program = new Command();
program
  .command("start")
  .option("-p, --port <number>", "port", process.env.PORT || "4501")
  .option("-H, --host <host>", "host", "127.0.0.1")
  .action((options) => startServer({ port: Number(options.port), host: options.host }));
program.command("migrate").action(() => {});
program.parse();
-- server.js --
const http = require("http");
exports.startServer = ({ port, host }) => http.createServer((_, r) => r.end("x")).listen(port, host);
`, ` => loopback 4511
PORT=5123 => loopback 4511`},
	{"Node.js: the first variable that is set", `-- Procfile --
web: node server.js
-- package.json --
{"name":"gate"}
-- server.js --
const http = require("http");

function firstDefined(...names) {
  for (const name of names) {
    if (process.env[name]) {
      return process.env[name];
    }
  }
  return undefined;
}

const port = firstDefined("HTTP_PLATFORM_PORT", "PORT", "NODE_PORT") || 4301;
http.createServer((req, res) => res.end("x")).listen(port);
`, ` => any 4301
PORT=5123 => any 5123
HTTP_PLATFORM_PORT=5125 PORT=5123 => any 5125`},
	{"Node.js: the folder that node starts", `-- Procfile --
web: node .
-- package.json --
{"name":"gate","main":"lib/index.js","config":{"port":"4401"}}
-- lib/index.js --
const pkg = require("../package.json");
const port = process.env.PORT || pkg.config.port;
require("http").createServer().listen(port, "127.0.0.1");
`, ` => loopback 4401
PORT=5123 => loopback 5123`},
	{"Node.js: what ??= and ||= leave", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const config = { host: "0.0.0.0" };
config.port ??= process.env.PORT || 3001;
config.host ||= "127.0.0.1";
require("http").createServer().listen(config.port, config.host);
`, ` => any 3001
PORT=5123 => any 5123
PORT= => any 3001`},
	{"Node.js: what a compiler of TypeScript writes", `-- Procfile --
web: node dist/main.js
-- package.json --
{"name":"gate","scripts":{"build":"tsc"},"dependencies":{"envalid":"8.0.0"},"devDependencies":{"typescript":"5.9.0"}}
-- tsconfig.json --
{"compilerOptions":{"outDir":"dist","rootDir":"src","module":"commonjs"}}
-- dist/main.js --
"use strict";
Object.defineProperty(exports, "__esModule", { value: true });
const node_http_1 = require("node:http");
const settings_1 = require("./settings");
const server = (0, node_http_1.createServer)((req, res) => res.end("x"));
server.listen(settings_1.settings.port);
-- dist/settings.js --
"use strict";
Object.defineProperty(exports, "__esModule", { value: true });
exports.settings = void 0;
const envalid_1 = require("envalid");
const env = (0, envalid_1.cleanEnv)(process.env, {
    GATE_PORT: (0, envalid_1.port)({ default: undefined }),
    PORT: (0, envalid_1.port)({ default: 3500 }),
});
exports.settings = { port: env.GATE_PORT ?? env.PORT };
-- src/main.ts --
import { createServer } from "node:http";
import { settings } from "./settings";
const server = createServer((req, res) => res.end("x"));
server.listen(settings.port);
-- src/settings.ts --
import { cleanEnv, port } from "envalid";
const env = cleanEnv(process.env, {
  GATE_PORT: port({ default: undefined }),
  PORT: port({ default: 3500 }),
});
export const settings = { port: env.GATE_PORT ?? env.PORT };
`, ` => any 3500
PORT=5123 => any 5123
GATE_PORT=5124 PORT=5123 => any 5124`},
	{"Node.js: what is spread under conditions", `-- Procfile --
web: node s.js
-- package.json --
{"name":"g"}
-- s.js --
const settings = { port: 3004, ...(process.env.PORT && { port: process.env.PORT }), ...(process.env.HOST ? { host: process.env.HOST } : {}) };
require("http").createServer().listen(settings);
`, ` => any 3004
PORT=5123 => any 5123
PORT= => any 3004`},
	{"PHP: a filter with a default", `-- Procfile --
web: php server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- server.php --
<?php

final class Settings
{
    private function __construct(
        public readonly string $host,
        public readonly int $port,
    ) {
    }

    public static function fromEnvironment(): self
    {
        $port = filter_var($_SERVER['PORT'] ?? null, FILTER_VALIDATE_INT, ['options' => ['default' => 8303, 'min_range' => 1]]);

        return new self($_ENV['HOST'] ?? '0.0.0.0', $port);
    }
}

$settings = Settings::fromEnvironment();
$socket = socket_create(AF_INET, SOCK_STREAM, SOL_TCP);
socket_bind($socket, $settings->host, $settings->port);
socket_listen($socket);
while ($client = socket_accept($socket)) {
    socket_close($client);
}
`, ` => any 8303
PORT=5123 => any 5123
PORT=abc => any 8303`},
	{"PHP: a function of its own for the environment", `-- Procfile --
web: php server.php
-- composer.json --
{}
-- .env.php --
<?php
return ['APP_ENV' => 'local', 'PORT' => '8302'];
-- server.php --
<?php

$defaults = require __DIR__ . '/.env.php';

function env(string $key, ?string $default = null): ?string
{
    global $defaults;
    $value = getenv($key);
    return $value === false ? ($defaults[$key] ?? $default) : $value;
}

$host = match (env('APP_ENV')) {
    'production', 'staging' => '0.0.0.0',
    default => '127.0.0.1',
};
$server = stream_socket_server("tcp://{$host}:" . env('PORT'));
while ($server) {
    $conn = @stream_socket_accept($server, 3600);
    if ($conn) fclose($conn);
}
`, ` => loopback 8302
PORT=5123 => loopback 5123
PORT=5123 APP_ENV=production => any 5123`},
	{"PHP: a loop over keys that fills an array", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
$c = ['host' => '127.0.0.1', 'port' => 8302];
foreach (['host', 'port'] as $key) {
    $v = getenv(strtoupper($key));
    if ($v !== false) { $c[$key] = $v; }
}
$s = stream_socket_server("tcp://{$c['host']}:{$c['port']}");
while (true) { $x = @stream_socket_accept($s, 60); }
`, ` => loopback 8302
PORT=5123 => loopback 5123`},
	{"PHP: a pattern", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
$port = getenv('PORT');
if ($port === false) { $port = '8300'; }
if (!preg_match('/^\d{1,5}$/', $port)) { exit("no\n"); }
$s = stream_socket_server("tcp://0.0.0.0:$port");
while (true) { $c = @stream_socket_accept($s, 60); }
`, ` => any 8300
PORT=5123 => any 5123
PORT=abc => exits`},
	{"PHP: an array that is returned by a file, by keys", `-- Procfile --
web: php bin/server.php
-- composer.json --
{"require":{"php":"^8.2"}}
-- config/app.php --
<?php

return [
    'env' => getenv('APP_ENV') ?: 'dev',
    'servers' => [
        'dev' => ['host' => '127.0.0.1', 'port' => 8302],
        'prod' => ['host' => '0.0.0.0', 'port' => (int) (getenv('PORT') ?: 8080)],
    ],
];
-- bin/server.php --
<?php

declare(strict_types=1);

$config = require dirname(__DIR__) . '/config/app.php';
['host' => $host, 'port' => $port] = $config['servers'][$config['env']];

$socket = stream_socket_server(sprintf('tcp://%s:%d', $host, $port), $errno, $errstr);
if (!$socket) {
    fwrite(STDERR, "$errstr ($errno)\n");
    exit(1);
}

while (true) {
    $conn = @stream_socket_accept($socket, 3600);
    if ($conn) {
        fwrite($conn, "HTTP/1.1 200 OK\r\nContent-Length: 1\r\n\r\nx");
        fclose($conn);
    }
}
`, ` => loopback 8302
PORT=5123 => loopback 8302
APP_ENV=prod PORT=5123 => any 5123`},
	{"PHP: arguments by their names", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
function start(string $host = '127.0.0.1', int $port = 8302) {
    $s = stream_socket_server("tcp://$host:$port");
    while (true) { $x = @stream_socket_accept($s, 60); }
}
$o = [];
if ($p = getenv('PORT')) { $o['port'] = (int) $p; }
start(...$o);
`, ` => loopback 8302
PORT=5123 => loopback 5123`},
	{"PHP: arrays that are merged and extracted", `-- Procfile --
web: php server.php
-- composer.json --
{}
-- config.php --
<?php
return array_merge(
    ['host' => '127.0.0.1', 'port' => 8302],
    array_filter([
        'host' => getenv('SERVER_HOST'),
        'port' => getenv('SERVER_PORT') ?: getenv('PORT'),
    ])
);
-- server.php --
<?php
$config = require __DIR__ . '/config.php';
extract($config);
$socket = stream_socket_server("tcp://$host:$port", $errno, $errstr);
if ($socket === false) {
    throw new RuntimeException($errstr, $errno);
}
for (;;) {
    $c = @stream_socket_accept($socket, 60);
    if ($c !== false) {
        fclose($c);
    }
}
`, ` => loopback 8302
PORT=5123 => loopback 5123
SERVER_PORT=5124 => loopback 5124`},
	{"PHP: long options", `-- Procfile --
web: php server.php --port=8311
-- composer.json --
{}
-- server.php --
<?php
$options = getopt('', ['port::', 'host::']);
$port = $options['port'] ?? getenv('PORT') ?: 8301;
$host = $options['host'] ?? '0.0.0.0';
$s = stream_socket_server("tcp://$host:$port");
while (true) { $c = @stream_socket_accept($s, 60); if ($c) fclose($c); }
`, ` => any 8311
PORT=5123 => any 8311`},
	{"PHP: properties that a constructor declares", `-- Procfile --
web: php src/main.php
-- composer.json --
{"autoload":{"psr-4":{"Gate\\":"src/"}}}
-- src/main.php --
<?php
declare(strict_types=1);

namespace Gate;

spl_autoload_register(function (string $class): void {
    require __DIR__ . '/' . str_replace(['Gate\\', '\\'], ['', '/'], $class) . '.php';
});

$config = new Config(getenv());
(new Server($config))->listen();
-- src/Config.php --
<?php
namespace Gate;

class Config
{
    public const DEFAULT_PORT = 8303;

    public function __construct(private array $env)
    {
    }

    public function port(): int
    {
        return (int) ($this->env['PORT'] ?? self::DEFAULT_PORT);
    }

    public function host(): string
    {
        return ($this->env['APP_ENV'] ?? 'prod') === 'dev' ? '127.0.0.1' : '0.0.0.0';
    }
}
-- src/Server.php --
<?php
namespace Gate;

class Server
{
    public function __construct(private readonly Config $config)
    {
    }

    public function listen(): void
    {
        $socket = stream_socket_server("tcp://{$this->config->host()}:{$this->config->port()}");
        while (true) {
            $c = @stream_socket_accept($socket, 60);
            if ($c) {
                fclose($c);
            }
        }
    }
}
`, ` => any 8303
PORT=5123 => any 5123
APP_ENV=dev PORT=5123 => loopback 5123`},
	{"PHP: what ??= leaves", `-- Procfile --
web: php s.php
-- composer.json --
{}
-- s.php --
<?php
$c = ['host' => '127.0.0.1'];
$c['port'] ??= getenv('PORT') ?: 8301;
$c['host'] = '0.0.0.0';
$s = stream_socket_server("tcp://{$c['host']}:{$c['port']}");
while (true) { $x = @stream_socket_accept($s, 60); }
`, ` => any 8301
PORT=5123 => any 5123`},
	{"Python: a class of settings by its name", `-- Procfile --
web: python run.py
-- requirements.txt --
flask==3.1.2
-- config.py --
import os


class Config:
    PORT = int(os.environ.get("PORT", 8103))
    HOST = "127.0.0.1"
    DEBUG = False


class DevelopmentConfig(Config):
    pass


class ProductionConfig(Config):
    HOST = "0.0.0.0"


config_by_name = dict(development=DevelopmentConfig, production=ProductionConfig, default=DevelopmentConfig)
-- gate/__init__.py --
from flask import Flask

from config import config_by_name


def create_app(config_name):
    app = Flask(__name__)
    app.config.from_object(config_by_name[config_name])
    return app
-- run.py --
import os

from gate import create_app

app = create_app(os.getenv("FLASK_ENV") or "default")

if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"])
`, ` => loopback 8103
PORT=5123 => loopback 5123
FLASK_ENV=production PORT=5123 => any 5123`},
	{"Python: a data class that makes itself", `-- Procfile --
web: python -m gate.server
-- requirements.txt --

-- gate/__init__.py --

-- gate/config.py --
import os
from dataclasses import dataclass
from typing import Optional


def _env(*names: str, default: Optional[str] = None) -> Optional[str]:
    for name in names:
        value = os.environ.get(name)
        if value:
            return value
    return default


@dataclass
class HttpConfig:
    host: str
    port: int

    @classmethod
    def load(cls) -> "HttpConfig":
        return cls(
            host=_env("GATE_HTTP_HOST", default="127.0.0.1"),
            port=int(_env("GATE_HTTP_PORT", "PORT", default="8102")),
        )
-- gate/server.py --
import logging
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

from .config import HttpConfig


class Handler(BaseHTTPRequestHandler):
    def do_GET(self):
        self.send_response(200)
        self.end_headers()
        self.wfile.write(b"x")


def serve(config: HttpConfig) -> None:
    httpd = ThreadingHTTPServer((config.host, config.port), Handler)
    logging.info("serving on %s:%d", *httpd.server_address)
    try:
        httpd.serve_forever()
    finally:
        httpd.server_close()


def main() -> int:
    logging.basicConfig(level=logging.INFO)
    serve(HttpConfig.load())
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
`, ` => loopback 8102
PORT=5123 => loopback 5123
GATE_HTTP_PORT=5124 PORT=5123 => loopback 5124`},
	{"Python: a dotenv file that comes too late", `-- Procfile --
web: uvicorn --env-file .env main:app --port 8102
-- requirements.txt --
uvicorn==0.38.0
-- .env --
UVICORN_HOST=0.0.0.0
-- main.py --
async def app(scope, receive, send):
    pass
`, ` => loopback 8102
PORT=5123 => loopback 8102`},
	{"Python: a file that an argument names", `-- Procfile --
web: python app.py --config prod.toml
-- requirements.txt --

-- dev.toml --
[server]
host = "127.0.0.1"
port = 8109
-- prod.toml --
[server]
host = "0.0.0.0"
port = 8119
-- app.py --
import argparse
import os
import tomllib
from http.server import HTTPServer, SimpleHTTPRequestHandler

parser = argparse.ArgumentParser()
parser.add_argument("-c", "--config", default="dev.toml")
args = parser.parse_args()

with open(args.config, "rb") as fh:
    config = tomllib.load(fh)

server = config["server"]
host = server.get("host", "127.0.0.1")
port = int(os.environ.get("PORT", server["port"]))
HTTPServer((host, port), SimpleHTTPRequestHandler).serve_forever()
`, ` => any 8119
PORT=5123 => any 5123`},
	{"Python: a key that is asked for", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
cfg = {"host": "127.0.0.1", **({"port": int(os.environ["PORT"])} if os.environ.get("PORT") else {})}
port = cfg["port"] if "port" in cfg else 8005
HTTPServer((cfg["host"], port), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8005
PORT=5123 => loopback 5123
PORT= => loopback 8005`},
	{"Python: a key that is there sometimes", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
cfg = {}
if os.environ.get("PORT"):
    cfg["port"] = int(os.environ["PORT"])
HTTPServer(("", cfg.get("port", 8001)), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8001
PORT=5123 => any 5123
PORT= => any 8001`},
	{"Python: a list of addresses", `-- Procfile --
web: gunicorn -c config/gunicorn.py gate.wsgi:app
-- requirements.txt --
gunicorn==23.0.0
-- config/gunicorn.py --
import os

env = os.environ.get("GATE_ENV", "live")
_host = {"local": "127.0.0.1"}.get(env, "0.0.0.0")
_port = int(os.environ.get("PORT", "8101"))

bind = ["%s:%d" % (_host, _port)]
workers = int(os.environ.get("WEB_CONCURRENCY", 1))
worker_class = "sync"
timeout = 30


def on_starting(server):
    server.log.info("starting")
-- gate/__init__.py --

-- gate/wsgi.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]
`, ` => any 8101
PORT=5123 => any 5123
PORT=5123 GATE_ENV=local => loopback 5123`},
	{"Python: a loop over keys that fills a mapping", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
cfg = {"host": "127.0.0.1", "port": 8002}
for key in ("host", "port"):
    value = os.environ.get(key.upper())
    if value:
        cfg[key] = value
HTTPServer((cfg["host"], int(cfg["port"])), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8002
PORT=5123 => loopback 5123
PORT= => loopback 8002`},
	{"Python: a module named by the environment", `-- Procfile --
web: python app.py
-- requirements.txt --

-- settings/__init__.py --

-- settings/base.py --
import os
HOST = "127.0.0.1"
PORT = int(os.environ.get("PORT", 8105))
-- settings/live.py --
from .base import *

HOST = "0.0.0.0"
PORT = PORT + 1
-- app.py --
import importlib
import os
from http.server import BaseHTTPRequestHandler, HTTPServer

settings = importlib.import_module("settings." + os.environ.get("GATE_SETTINGS", "base"))
HTTPServer((settings.HOST, settings.PORT), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8105
PORT=5123 => loopback 5123
GATE_SETTINGS=live => any 8106`},
	{"Python: a named tuple from keywords", `-- Procfile --
web: python main.py
-- requirements.txt --

-- main.py --
import os
import signal
import sys
import threading
from http.server import BaseHTTPRequestHandler, HTTPServer
from typing import NamedTuple


class Address(NamedTuple):
    host: str = "0.0.0.0"
    port: int = 8110

    @classmethod
    def from_env(cls, prefix=""):
        kwargs = {}
        if host := os.getenv(f"{prefix}HOST"):
            kwargs["host"] = host
        if port := os.getenv(f"{prefix}PORT"):
            kwargs["port"] = int(port)
        return cls(**kwargs)


server = HTTPServer(Address.from_env(), BaseHTTPRequestHandler)
thread = threading.Thread(target=server.serve_forever)
signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
thread.start()
thread.join()
`, ` => any 8110
PORT=5123 => any 5123
PORT= => any 8110`},
	{"Python: a package with a settings class", `-- Procfile --
web: python -m gate
-- requirements.txt --
flask==3.1.2
-- gate/__init__.py --
from flask import Flask


def create_app(config=None):
    app = Flask(__name__)
    app.config.from_object("gate.settings.Settings")
    if config:
        app.config.update(config)

    @app.get("/")
    def index():
        return "x"

    return app
-- gate/settings.py --
import os


class Settings:
    HOST = os.getenv("HOST", "0.0.0.0")
    PORT = int(os.getenv("PORT") or 8101)
    DEBUG = False
-- gate/__main__.py --
from gate import create_app

app = create_app()

if __name__ == "__main__":
    app.run(host=app.config["HOST"], port=app.config["PORT"], debug=app.config["DEBUG"])
`, ` => any 8101
PORT=5123 => any 5123
PORT= => any 8101`},
	{"Python: an address or a port", `-- Procfile --
web: python main.py
-- requirements.txt --

-- main.py --
import os
from socketserver import TCPServer, StreamRequestHandler
from urllib.parse import urlsplit


class Echo(StreamRequestHandler):
    def handle(self):
        self.wfile.write(self.rfile.readline())


def address():
    bind = os.environ.get("HTTP_BIND")
    if bind and not bind.startswith("["):
        host, _, port = bind.partition(":")
        return host, int(port)
    return "", int(os.environ.get("PORT", 8107))


TCPServer.allow_reuse_address = True
with TCPServer(address(), Echo) as server:
    server.serve_forever()
`, ` => any 8107
PORT=5123 => any 5123
HTTP_BIND=[::1]:5124 => any 8107`},
	{"Python: an argument by place", `-- Procfile --
web: python server.py --bind 0.0.0.0
-- requirements.txt --

-- server.py --
#!/usr/bin/env python3
import argparse
import functools
import http.server
import os


def parse_args():
    parser = argparse.ArgumentParser(description="gate")
    parser.add_argument("--bind", "-b", default="127.0.0.1", metavar="ADDRESS")
    parser.add_argument("--directory", "-d", default=os.getcwd())
    parser.add_argument("port", nargs="?", type=int, default=os.environ.get("PORT", 8102))
    return parser.parse_args()


def main():
    args = parse_args()
    handler = functools.partial(http.server.SimpleHTTPRequestHandler, directory=args.directory)
    with http.server.ThreadingHTTPServer((args.bind, args.port), handler) as httpd:
        httpd.serve_forever()


if __name__ == "__main__":
    main()
`, ` => any 8102
PORT=5123 => any 5123
PORT=x => exits`},
	{"Python: an argument with a function of its own", `-- Procfile --
web: python main.py --listen 0.0.0.0:8114
-- requirements.txt --

-- main.py --
import argparse
import os
from http.server import BaseHTTPRequestHandler, HTTPServer


def address(text):
    host, _, port = text.rpartition(":")
    if not host:
        host = "127.0.0.1"
    return host, int(port)


parser = argparse.ArgumentParser()
parser.add_argument("--listen", type=address, default=("127.0.0.1", int(os.environ.get("PORT", 8104))))
options = parser.parse_args()
HTTPServer(options.listen, BaseHTTPRequestHandler).serve_forever()
`, ` => any 8114
PORT=5123 => any 8114`},
	{"Python: an enumeration by its value", `-- Procfile --
web: python app.py
-- requirements.txt --
pydantic-settings
-- app.py --
import os
from enum import Enum
from http.server import BaseHTTPRequestHandler, HTTPServer


class Env(str, Enum):
    DEV = "dev"
    LIVE = "live"


env = Env(os.environ.get("ENV", "live"))
HOSTS = {Env.DEV: "127.0.0.1", Env.LIVE: "0.0.0.0"}
HTTPServer((HOSTS[env], int(os.environ.get("PORT", "8107"))), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8107
PORT=5123 => any 5123
PORT=5123 ENV=dev => loopback 5123`},
	{"Python: an error that is passed over", `-- Procfile --
web: python main.py
-- requirements.txt --

-- main.py --
import os
import sys
from contextlib import suppress
from http.server import BaseHTTPRequestHandler, HTTPServer

port = 8105
with suppress(KeyError):
    port = os.environ["PORT"]
try:
    port = int(port)
except ValueError:
    print("PORT must be a number", file=sys.stderr)
    raise SystemExit(2)
HTTPServer(("", port), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8105
PORT=5123 => any 5123
PORT=http => exits`},
	{"Python: an exit code", `-- Procfile --
web: python server.py
-- requirements.txt --

-- server.py --
import logging
import os
import sys
from http.server import BaseHTTPRequestHandler, HTTPServer

logger = logging.getLogger(__name__)


class InvalidSetting(ValueError):
    def __init__(self, name, value):
        super().__init__(f"{name}={value!r} is invalid")


def env_int(name, default):
    value = os.environ.get(name)
    if value is None:
        return default
    try:
        return int(value)
    except ValueError as error:
        raise InvalidSetting(name, value) from error


def main(argv=None):
    try:
        port = env_int("PORT", 8104)
    except InvalidSetting as error:
        logger.error("%s", error)
        return 78
    with HTTPServer(("0.0.0.0", port), BaseHTTPRequestHandler) as server:
        server.serve_forever()
    return 0


if __name__ == "__main__":
    sys.exit(main())
`, ` => any 8104
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Python: an ini file beside the program", `-- Procfile --
web: python app.py
-- requirements.txt --

-- config.ini --
[server]
host = 127.0.0.1
port = 8108
-- app.py --
import configparser
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler

here = os.path.dirname(os.path.abspath(__file__))
config = configparser.ConfigParser()
config.read(os.path.join(here, "config.ini"))

host = config.get("server", "host")
port = int(os.environ.get("PORT", config.getint("server", "port")))

HTTPServer((host, port), SimpleHTTPRequestHandler).serve_forever()
`, ` => loopback 8108
PORT=5123 => loopback 5123`},
	{"Python: arguments of gunicorn in a variable", `-- Procfile --
web: gunicorn wsgi:app
-- requirements.txt --
gunicorn==23.0.0
-- wsgi.py --
def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]
`, ` => loopback 8000
PORT=5123 => any 5123
GUNICORN_CMD_ARGS=--bind=127.0.0.1:5124 => loopback 5124
WEB_CONCURRENCY=2 => loopback 8000`},
	{"Python: arguments that are given sometimes", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
def start(host="127.0.0.1", port=8004):
    HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()
options = {}
if os.environ.get("PORT"):
    options["port"] = int(os.environ["PORT"])
    options["host"] = ""
start(**options)
`, ` => loopback 8004
PORT=5123 => any 5123
PORT= => loopback 8004`},
	{"Python: errors that end the program", `-- Procfile --
web: python server.py
-- requirements.txt --

-- server.py --
import os
import sys
from wsgiref.simple_server import make_server

MIN_PORT, MAX_PORT = 1, 65535


class ConfigError(Exception):
    pass


def read_port(environ):
    raw = environ.get("PORT", "8108").strip()
    if not raw.isdigit():
        raise ConfigError(f"PORT must be an integer, got {raw!r}")
    port = int(raw)
    if not MIN_PORT <= port <= MAX_PORT:
        raise ConfigError("PORT is out of range")
    return port


def app(environ, start_response):
    start_response("200 OK", [("Content-Type", "text/plain")])
    return [b"x"]


if __name__ == "__main__":
    try:
        port = read_port(os.environ)
    except ConfigError as exc:
        print(exc, file=sys.stderr)
        sys.exit(2)
    make_server("0.0.0.0", port, app).serve_forever()
`, ` => any 8108
PORT=5123 => any 5123
PORT=-1 => exits`},
	{"Python: functions with defaults", `-- Procfile --
web: python app.py
-- requirements.txt --

-- app.py --
import os
from http.server import HTTPServer, SimpleHTTPRequestHandler

TRUE = {"1", "true", "yes", "on"}


def flag(name, default=False):
    value = os.environ.get(name)
    return default if value is None else value.strip().lower() in TRUE


def bind_address():
    if flag("PUBLIC", True):
        return "0.0.0.0"
    return "127.0.0.1"


def bind_port(default=8109):
    return int(os.environ.get("PORT", default))


HTTPServer((bind_address(), bind_port()), SimpleHTTPRequestHandler).serve_forever()
`, ` => any 8109
PORT=5123 => any 5123
PORT=5123 PUBLIC=no => loopback 5123`},
	{"Python: groups of a pattern", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os, re
from http.server import HTTPServer, BaseHTTPRequestHandler
m = re.match(r"([\d.]+):(\d+)", os.environ.get("BIND", "127.0.0.1:8001"))
if m:
    host, port = m.group(1), int(m.group(2))
else:
    host, port = "127.0.0.1", 8002
HTTPServer((host, port), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8001
BIND=0.0.0.0:5123 => any 5123
BIND=zz => loopback 8002`},
	{"Python: keywords and overrides", `-- Procfile --
web: python app.py
-- requirements.txt --
waitress==3.0.2
-- app.py --
from waitress import serve
import os


def app(environ, start_response):
    start_response("200 OK", [])
    return [b"x"]


def run(**overrides):
    options = {"host": "0.0.0.0", "port": os.environ.get("PORT") or 8106, "threads": 4}
    options.update(overrides)
    serve(app, **options)


run()
`, ` => any 8106
PORT=5123 => any 5123
PORT= => any 8106`},
	{"Python: one of two mappings of a file, changed later", `-- Procfile --
web: python app.py
-- requirements.txt --
PyYAML==6.0.3
-- config.yaml --
default:
  host: 127.0.0.1
  port: 8108
hill:
  host: 0.0.0.0
  port: 8118
-- app.py --
import os
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path

import yaml

BASE = Path(__file__).resolve().parent


class Handler(BaseHTTPRequestHandler):
    def do_GET(self):
        self.send_response(200)
        self.end_headers()


def load():
    with open(BASE / "config.yaml") as f:
        data = yaml.safe_load(f)
    site = os.environ.get("SITE", "default")
    cfg = data.get(site, data["default"])
    if "PORT" in os.environ:
        cfg["port"] = int(os.environ["PORT"])
    return cfg


if __name__ == "__main__":
    cfg = load()
    HTTPServer((cfg["host"], cfg["port"]), Handler).serve_forever()
`, ` => loopback 8108
PORT=5123 => loopback 5123
PORT=5123 SITE=hill => any 5123`},
	{"Python: options of tornado", `-- Procfile --
web: python serve.py
-- requirements.txt --
tornado==6.5.0
-- serve.py --
import os

import tornado.httpserver
import tornado.ioloop
import tornado.web
from tornado.options import define, options, parse_command_line

define("port", default=os.environ.get("PORT", 8106), help="port to listen on", type=int)
define("address", default="", help="address")


class Main(tornado.web.RequestHandler):
    def get(self):
        self.write("x")


def make_app():
    return tornado.web.Application([(r"/", Main)])


if __name__ == "__main__":
    parse_command_line()
    server = tornado.httpserver.HTTPServer(make_app())
    server.listen(options.port, address=options.address)
    tornado.ioloop.IOLoop.current().start()
`, ` => any 8106
PORT=5123 => any 5123
PORT= => any 0`},
	{"Python: patterns", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os, re, sys
from http.server import HTTPServer, BaseHTTPRequestHandler
PORT_RE = re.compile(r"^\d+$")
raw = os.environ.get("PORT", "8000")
if not PORT_RE.match(raw):
    sys.exit("bad")
if re.fullmatch(r"\d{4}", raw) is None:
    sys.exit(1)
HTTPServer(("", int(raw)), BaseHTTPRequestHandler).serve_forever()
`, ` => any 8000
PORT=5123 => any 5123
PORT=x => exits
PORT=51z => exits`},
	{"Python: properties over the environment", `-- Procfile --
web: python srv.py
-- requirements.txt --

-- srv.py --
import os
import selectors
import socket

from settings import settings

sel = selectors.DefaultSelector()


def accept(sock):
    conn, _ = sock.accept()
    conn.close()


sock = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
sock.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
sock.bind(settings.address)
sock.listen(100)
sock.setblocking(False)
sel.register(sock, selectors.EVENT_READ, accept)
while True:
    for key, _ in sel.select():
        key.data(key.fileobj)
-- settings.py --
import os
from functools import cached_property


class Settings:
    def __init__(self, environ=os.environ):
        self._environ = environ

    def _get(self, name, default=None, cast=str):
        raw = self._environ.get(name)
        return cast(raw) if raw is not None else default

    @property
    def host(self):
        return "0.0.0.0" if self._get("BIND_ALL", False, cast=lambda v: v == "1") else "127.0.0.1"

    @property
    def port(self):
        return self._get("PORT", 8111, int)

    @cached_property
    def address(self):
        return (self.host, self.port)


settings = Settings()
`, ` => loopback 8111
PORT=5123 => loopback 5123
PORT=5123 BIND_ALL=1 => any 5123`},
	{"Python: settings that are made once", `-- Procfile --
web: python main.py
-- requirements.txt --
uvicorn==0.38.0
fastapi==0.121.0
-- main.py --
import os
import uvicorn
from fastapi import APIRouter, FastAPI
from settings import get_settings

router = APIRouter()

@router.get("/")
async def root():
    return {}

def build() -> FastAPI:
    app = FastAPI()
    app.include_router(router)
    return app

app = build()

if __name__ == "__main__":
    settings = get_settings()
    uvicorn.run(app, host=settings.host, port=settings.port)
-- settings.py --
import os
from functools import lru_cache


class Settings:
    host: str = "127.0.0.1"
    port: int

    def __init__(self) -> None:
        self.host = os.environ.get("HOST", self.host)
        self.port = int(os.environ.get("PORT") or 8106)


@lru_cache(maxsize=None)
def get_settings() -> Settings:
    return Settings()
`, ` => loopback 8106
PORT=5123 => loopback 5123
PORT= => loopback 8106`},
	{"Python: what setdefault and += leave", `-- Procfile --
web: python s.py
-- requirements.txt --

-- s.py --
import os
from http.server import HTTPServer, BaseHTTPRequestHandler
cfg = {}
cfg["port"] = os.environ.get("PORT") or 8001
cfg.setdefault("host", "127.0.0.1")
cfg.setdefault("port", 9)
cfg["port"] = int(cfg["port"])
cfg["port"] += 1
HTTPServer((cfg["host"], cfg["port"]), BaseHTTPRequestHandler).serve_forever()
`, ` => loopback 8002
PORT=5123 => loopback 5124
PORT= => loopback 8002`},
	{"Ruby: a Struct that options fill", `-- Procfile --
web: ruby bin/serve --bind 0.0.0.0 --port 8214
-- Gemfile --
source "https://rubygems.org"
-- bin/serve --
#!/usr/bin/env ruby
require "optparse"
require "socket"

Options = Struct.new(:port, :bind)

class Parser
  def self.parse(args)
    options = Options.new(ENV.fetch("PORT", 8204).to_i, "127.0.0.1")
    OptionParser.new do |opts|
      opts.banner = "Usage: serve [options]"
      opts.on("-pPORT", "--port=PORT", Integer, "port") { |v| options.port = v }
      opts.on("--bind HOST", "host") { |v| options.bind = v }
    end.parse!(args)
    options
  end
end

options = Parser.parse(ARGV)
server = TCPServer.new(options.bind, options.port)
loop { server.accept.close }
`, ` => any 8214
PORT=5123 => any 8214`},
	{"Ruby: a Struct with methods of its class", `-- Procfile --
web: ruby bin/gate
-- Gemfile --
source "https://rubygems.org"
-- bin/gate --
#!/usr/bin/env ruby
# frozen_string_literal: true

$LOAD_PATH.unshift File.expand_path("../lib", __dir__)
require "gate"

Gate::Server.new(Gate::Config.from_env).run
-- lib/gate.rb --
# frozen_string_literal: true

require_relative "gate/config"
require_relative "gate/server"

module Gate
end
-- lib/gate/config.rb --
# frozen_string_literal: true

module Gate
  Config = Struct.new(:host, :port, keyword_init: true) do
    def self.from_env(env = ENV)
      new(host: env.fetch("HOST", "0.0.0.0"), port: port(env["PORT"]))
    end

    def self.port(raw)
      return 8203 if raw.nil? || raw.strip.empty?

      Integer(raw, 10)
    end
  end
end
-- lib/gate/server.rb --
# frozen_string_literal: true

require "socket"

module Gate
  class Server
    def initialize(config)
      @config = config
    end

    def run
      Socket.tcp_server_loop(@config.host, @config.port) do |conn, _|
        conn.close
      end
    end
  end
end
`, ` => any 8203
PORT=5123 => any 5123
PORT= => any 8203`},
	{"Ruby: a case in the settings of puma", `-- Procfile --
web: puma -C puma.rb
-- Gemfile --
source "https://rubygems.org"
gem "puma"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- puma.rb --
app_env = ENV.fetch("APP_ENV") { "development" }
threads 1, 2

case app_env
when "production"
  bind "tcp://0.0.0.0:#{ENV.fetch("PORT")}"
  workers 0
else
  port ENV.fetch("PORT", 8203), "127.0.0.1"
end
`, ` => loopback 8203
PORT=5123 => loopback 5123
APP_ENV=production PORT=5123 => any 5123`},
	{"Ruby: a flag beats the settings", `-- Procfile --
web: puma -C config/puma.rb -p 8213
-- Gemfile --
source "https://rubygems.org"
gem "puma"
-- config.ru --
run ->(e) { [200, {}, ["x"]] }
-- config/puma.rb --
workers 0
threads 1, 1
port ENV.fetch("PORT", 8203)
`, ` => any 8213
PORT=5123 => any 8213`},
	{"Ruby: a hash that is merged", `-- Procfile --
web: ruby gate.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- gate.rb --
require "webrick"
require "uri"

module Gate
  DEFAULTS = { BindAddress: "0.0.0.0", Port: 8205 }.freeze

  module_function

  def options
    opts = DEFAULTS.dup
    opts[:Port] = Integer(ENV["PORT"]) if ENV["PORT"]
    if (listen = ENV["LISTEN"])
      host, port = listen.split(":", 2)
      opts.merge!(BindAddress: host, Port: port.to_i)
    end
    opts
  end
end

server = WEBrick::HTTPServer.new(**Gate.options, AccessLog: [])
trap("TERM") { server.shutdown }
server.start
`, ` => any 8205
PORT=5123 => any 5123
LISTEN=127.0.0.1:5124 => loopback 5124`},
	{"Ruby: a hash without what is nil", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
given = { port: ENV["PORT"]&.to_i, host: ENV["HOST"] }.compact
conf = { port: 8003, host: "127.0.0.1" }.merge(given)
s = TCPServer.new(conf[:host], conf[:port])
loop { s.accept.close }
`, ` => loopback 8003
PORT=5123 => loopback 5123`},
	{"Ruby: a key that is there sometimes", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
opts = {}
opts[:port] = ENV["PORT"].to_i if ENV["PORT"]
s = TCPServer.new("0.0.0.0", opts.fetch(:port, 8001))
loop { s.accept.close }
`, ` => any 8001
PORT=5123 => any 5123`},
	{"Ruby: a loop over a hash that fills another", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
opts = { port: 8003, host: "127.0.0.1" }
{ port: "PORT", host: "HOST" }.each { |key, var| opts[key] = ENV[var] if ENV[var] }
s = TCPServer.new(opts[:host], opts[:port])
loop { s.accept.close }
`, ` => loopback 8003
PORT=5123 => loopback 5123`},
	{"Ruby: a module of settings", `-- Procfile --
web: ruby server.rb
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- server.rb --
require "webrick"
require_relative "config/environment"

server = WEBrick::HTTPServer.new(
  Port: Environment.port,
  BindAddress: Environment.host,
  AccessLog: [],
  Logger: WEBrick::Log.new(File::NULL)
)
server.mount_proc("/") { |req, res| res.body = "x" }
%w[INT TERM].each { |signal| trap(signal) { server.shutdown } }
server.start
-- config/environment.rb --
module Environment
  DEFAULTS = { port: 8201, host: "127.0.0.1" }.freeze

  def self.name
    ENV.fetch("RACK_ENV", "development")
  end

  def self.production?
    name == "production"
  end

  def self.port
    Integer(ENV.fetch("PORT", DEFAULTS[:port]))
  end

  def self.host
    production? ? "0.0.0.0" : DEFAULTS[:host]
  end
end
`, ` => loopback 8201
PORT=5123 => loopback 5123
RACK_ENV=production PORT=5123 => any 5123`},
	{"Ruby: a pattern that does not fit", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
raise ArgumentError, "no" if ENV["PORT"] && ENV["PORT"] !~ /^[0-9]+$/
host = ENV["RACK_ENV"] =~ /prod/ ? "0.0.0.0" : "127.0.0.1"
s = TCPServer.new(host, (ENV["PORT"] || 3203).to_i)
loop { s.accept.close }
`, ` => loopback 3203
PORT=5123 => loopback 5123
PORT=abc => exits`},
	{"Ruby: a pattern that must fit", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
port = ENV.fetch("PORT", "3201")
abort "PORT must be a number" unless port.match?(/\A\d+\z/)
s = TCPServer.new("0.0.0.0", port.to_i)
loop { s.accept.close }
`, ` => any 3201
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Ruby: a port that is set under a condition", `-- Procfile --
web: ruby app.rb -o 0.0.0.0
-- Gemfile --
source "https://rubygems.org"
gem "sinatra"
gem "puma"
-- app.rb --
require "sinatra"

set :port, ENV["PORT"] if ENV["PORT"]

get "/" do
  "x"
end
`, ` => any 4567
PORT=5123 => any 5123`},
	{"Ruby: an address in a file, a number that is checked", `-- Procfile --
web: ruby s.rb
-- Gemfile --
source "https://rubygems.org"
-- s.rb --
require "socket"
require "yaml"

CONFIG = YAML.load_file(File.join(__dir__, "config.yml"))
port = ENV["PORT"] || CONFIG["port"]
unless port.to_s =~ /\A\d+\z/
  warn "PORT must be a number"
  exit 1
end
server = TCPServer.open(CONFIG.dig("listen", "host"), port.to_i)
while (client = server.accept)
  client.puts "x"
  client.close
end
-- config.yml --
port: 8205
listen:
  host: 0.0.0.0
`, ` => any 8205
PORT=5123 => any 5123
PORT=abc => exits`},
	{"Ruby: arguments that are given sometimes", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
def start(host: "127.0.0.1", port: 8002)
  s = TCPServer.new(host, port)
  loop { s.accept.close }
end
opts = {}
opts[:port] = ENV["PORT"].to_i if ENV["PORT"]
start(**opts)
`, ` => loopback 8002
PORT=5123 => loopback 5123`},
	{"Ruby: files that load themselves", `-- Procfile --
web: ruby -Ilib bin/server.rb
-- Gemfile --
source "https://rubygems.org"
-- bin/server.rb --
require "dome"
Dome::App.run!
-- lib/dome.rb --
module Dome
  autoload :App, "dome/app"
  autoload :Env, "dome/env"
end
-- lib/dome/env.rb --
module Dome
  module Env
    extend self

    def fetch_int(name, default)
      value = ENV[name]
      return default if value.nil? || value.empty?
      value.to_i
    end
  end
end
-- lib/dome/app.rb --
require "socket"

module Dome
  class App
    DEFAULT_PORT = 8201

    class << self
      def run!(host: ENV.fetch("HOST", "0.0.0.0"), port: Env.fetch_int("PORT", DEFAULT_PORT))
        new(host, port).run
      end
    end

    attr_reader :host, :port

    def initialize(host, port)
      @host, @port = host, port
    end

    def run
      server = TCPServer.new(host, port)
      loop { server.accept.close }
    end
  end
end
`, ` => any 8201
PORT=5123 => any 5123
PORT= => any 8201`},
	{"Ruby: options that blocks put into a hash", `-- Procfile --
web: ruby server.rb -p 8214
-- Gemfile --
source "https://rubygems.org"
gem "webrick"
-- server.rb --
require "optparse"
require "webrick"

options = { port: ENV.fetch("PORT", "8204").to_i, bind: "127.0.0.1" }
OptionParser.new do |o|
  o.on("-p", "--port PORT", Integer) { |v| options[:port] = v }
  o.on("-b", "--bind HOST") { |v| options[:bind] = v }
end.parse!

server = WEBrick::HTTPServer.new(Port: options[:port], BindAddress: options[:bind])
server.mount_proc("/") { |_, res| res.body = "x" }
trap("INT") { server.shutdown }
server.start
`, ` => loopback 8214
PORT=5123 => loopback 8214
PORT= => loopback 8214`},
	{"Ruby: patterns in a case", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
def port
  case ENV["PORT"]
  when nil, "" then 3202
  when /\A\d+\z/ then ENV["PORT"].to_i
  when /\A:(\d+)/ then 5999
  else abort "no"
  end
end
s = TCPServer.new("0.0.0.0", port)
loop { s.accept.close }
`, ` => any 3202
PORT=5123 => any 5123
PORT=abc => exits
PORT=:5124 => any 5999`},
	{"Ruby: two ways to bind", `-- Procfile --
web: bundle exec puma -C config/puma.rb
-- Gemfile --
source "https://rubygems.org"
gem "puma"
gem "rack"
-- config.ru --
run ->(env) { [200, { "content-type" => "text/plain" }, ["x"]] }
-- config/puma.rb --
rack_env = ENV.fetch("RACK_ENV", "development")
environment rack_env
threads 1, 5

if rack_env == "production"
  bind "tcp://0.0.0.0:#{ENV.fetch("PORT", 9292)}"
else
  bind "tcp://127.0.0.1:#{ENV.fetch("PORT") { 8201 }}"
end
`, ` => loopback 8201
PORT=5123 => loopback 5123
RACK_ENV=production PORT=5124 => any 5124`},
	{"Ruby: what ||= and &&= leave", `-- Procfile --
web: ruby s.rb
-- Gemfile --

-- s.rb --
require "socket"
o = { host: "127.0.0.1" }
o[:port] ||= ENV["PORT"] || 8001
o[:host] &&= "0.0.0.0"
o[:port] = o[:port].to_i + 1
s = TCPServer.new(o[:host], o[:port])
loop { s.accept.close }
`, ` => any 8002
PORT=5123 => any 5124`},
}

// jar is the manifest of a program of Java without dependencies.
const jar = `-- pom.xml --
<project><modelVersion>4.0.0</modelVersion><groupId>dome</groupId><artifactId>gate</artifactId><version>1</version><build><finalName>gate</finalName></build></project>
`

func TestOrdinary(t *testing.T) {
	t.Parallel()
	for _, c := range ordinary {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			outcome(t, c.tree, c.want)
		})
	}
}
