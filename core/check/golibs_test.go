package check_test

// Libraries of Go that fill structures or give values by their keys.

var goLibraries = []struct{ name, tree, want string }{
	{"envconfig", `-- go.mod --
module dome

go 1.25

require github.com/kelseyhightower/envconfig v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "fmt"; import "log"; import "net/http"; import "github.com/kelseyhightower/envconfig"

type Config struct {
	Host        string ` + "`" + `default:"0.0.0.0"` + "`" + `
	Port        int    ` + "`" + `default:"8080"` + "`" + `
	ReadTimeout int    ` + "`" + `split_words:"true" default:"5"` + "`" + `
}

func main() {
	var c Config
	if err := envconfig.Process("dome", &c); err != nil {
		log.Fatal(err)
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", c.Host, c.Port), nil)
}
`, " => any 8080\nDOME_PORT=5123 => any 5123\nPORT=5123 => any 8080"},
	{"caarlos0/env with a prefix", `-- go.mod --
module dome

go 1.25

require github.com/caarlos0/env/v11 v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "fmt"; import "log"; import "net/http"; import "github.com/caarlos0/env/v11"

type HTTP struct {
	Port int ` + "`" + `env:"PORT" envDefault:"8080"` + "`" + `
}
type Config struct {
	HTTP HTTP   ` + "`" + `envPrefix:"HTTP_"` + "`" + `
	Host string ` + "`" + `env:"HOST" envDefault:"127.0.0.1"` + "`" + `
}

func main() {
	cfg := Config{}
	if err := env.Parse(&cfg); err != nil {
		log.Fatal(err)
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", cfg.Host, cfg.HTTP.Port), nil)
}
`, " => loopback 8080\nHTTP_PORT=5123 HOST=0.0.0.0 => any 5123"},
	{"caarlos0/env, a type", `-- go.mod --
module dome

go 1.25

require github.com/caarlos0/env/v11 v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "fmt"; import "net/http"; import "github.com/caarlos0/env/v11"

type Config struct {
	Port int ` + "`" + `env:"PORT" envDefault:"8080"` + "`" + `
}

func main() {
	cfg, err := env.ParseAs[Config]()
	if err != nil {
		panic(err)
	}
	http.ListenAndServe(fmt.Sprintf(":%d", cfg.Port), nil)
}
`, " => any 8080\nPORT=5123 => any 5123\nPORT=x => exits"},
	{"viper by itself", `-- go.mod --
module dome

go 1.25

require github.com/spf13/viper v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "net/http"; import "github.com/spf13/viper"

func main() {
	viper.SetDefault("port", 8080)
	viper.SetEnvPrefix("dome")
	viper.AutomaticEnv()
	http.ListenAndServe(":"+viper.GetString("port"), nil)
}
`, " => any 8080\nDOME_PORT=5123 => any 5123\nDOME_PORT= => any 8080"},
	{"viper with a file", `-- go.mod --
module dome

go 1.25

require github.com/spf13/viper v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "fmt"; import "net/http"; import "strings"; import "github.com/spf13/viper"

type Config struct {
	Server struct {
		Host string
		Port int
	}
}

func load() (*Config, error) {
	v := viper.New()
	v.SetConfigName("config")
	v.AddConfigPath(".")
	v.BindEnv("server.port", "PORT")
	v.SetEnvKeyReplacer(strings.NewReplacer(".", "_"))
	if err := v.ReadInConfig(); err != nil {
		return nil, err
	}
	return &Config{}, nil
}
func main() {
	viper.SetConfigName("config")
	viper.AddConfigPath(".")
	viper.BindEnv("server.port", "PORT")
	viper.ReadInConfig()
	http.ListenAndServe(fmt.Sprintf("%s:%d", viper.GetString("server.host"), viper.GetInt("server.port")), nil)
}
-- config.yaml --
server:
  host: 127.0.0.1
  port: 9090
`, " => loopback 9090\nPORT=5123 => loopback 5123"},
	{"kong", `-- go.mod --
module dome

go 1.25

require github.com/alecthomas/kong v1.0.0
-- Procfile --
web: go run . --host 0.0.0.0
-- main.go --
package main

import "fmt"; import "net/http"; import "github.com/alecthomas/kong"

var cli struct {
	Port int ` + "`" + `env:"PORT" default:"8080" short:"p"` + "`" + `
}

type CLI struct {
	Port int    ` + "`" + `env:"PORT" default:"8080" short:"p"` + "`" + `
	Host string ` + "`" + `default:"localhost"` + "`" + `
}

func main() {
	var c CLI
	kong.Parse(&c)
	http.ListenAndServe(fmt.Sprintf("%s:%d", c.Host, c.Port), nil)
}
`, " => any 8080\nPORT=5123 => any 5123"},
	{"cobra with a letter", `-- go.mod --
module dome

go 1.25

require github.com/spf13/cobra v1.0.0
-- Procfile --
web: go run . -p $PORT
-- main.go --
package main

import "fmt"; import "net/http"; import "os"; import "github.com/spf13/cobra"

func main() {
	var port int
	cmd := &cobra.Command{Use: "gate", RunE: func(cmd *cobra.Command, args []string) error {
		return http.ListenAndServe(fmt.Sprintf(":%d", port), nil)
	}}
	cmd.Flags().IntVarP(&port, "port", "p", 8080, "the port")
	if err := cmd.Execute(); err != nil {
		os.Exit(1)
	}
}
`, "PORT=5123 => any 5123"},
	{"a flag of cobra by its name", `-- go.mod --
module dome

go 1.25

require github.com/spf13/cobra v1.0.0
-- Procfile --
web: go run . --addr=:${PORT:-8081}
-- main.go --
package main

import "fmt"; import "net/http"; import "os"; import "github.com/spf13/cobra"

var cmd = &cobra.Command{Use: "gate", RunE: run}

func init() { cmd.PersistentFlags().String("addr", "127.0.0.1:8080", "x") }
func run(cmd *cobra.Command, args []string) error {
	addr, _ := cmd.Flags().GetString("addr")
	return http.ListenAndServe(addr, nil)
}
func main() {
	if err := cmd.Execute(); err != nil {
		os.Exit(1)
	}
}
`, " => any 8081\nPORT=5123 => any 5123"},
	{"urfave/cli", `-- go.mod --
module dome

go 1.25

require github.com/urfave/cli/v2 v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "fmt"; import "net/http"; import "os"; import "github.com/urfave/cli/v2"

func main() {
	app := &cli.App{Flags: []cli.Flag{&cli.IntFlag{Name: "port", Value: 8080, EnvVars: []string{"PORT"}}}, Action: func(c *cli.Context) error { return http.ListenAndServe(fmt.Sprintf(":%d", c.Int("port")), nil) }}
	app.Run(os.Args)
}
`, " => any 8080\nPORT=5123 => any 5123"},
	{"a file that is not there", `-- go.mod --
module dome

go 1.25

require observatory.example/y v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "encoding/json"; import "net/http"; import "os"

type config struct {
	Addr string ` + "`" + `json:"listen"` + "`" + `
}

func main() {
	c := config{Addr: ":8502"}
	if b, err := os.ReadFile("config.json"); err == nil {
		json.Unmarshal(b, &c)
	}
	http.ListenAndServe(c.Addr, nil)
}
`, "PORT=5123 => any 8502"},
	{"functions that are handed over", `-- go.mod --
module dome

go 1.25

require observatory.example/y v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "net/http"; import "os"

type option func(*http.Server)

func with(a string) option { return func(s *http.Server) { s.Addr = a } }
func newServer(opts ...option) *http.Server {
	s := &http.Server{Addr: ":8501"}
	for _, o := range opts {
		o(s)
	}
	return s
}
func main() {
	var opts []option
	if p := os.Getenv("PORT"); p != "" {
		opts = append(opts, with(":"+p))
	}
	newServer(opts...).ListenAndServe()
}
`, " => any 8501\nPORT=5123 => any 5123"},
	{"a pointer that is handed over", `-- go.mod --
module dome

go 1.25

require observatory.example/y v1.0.0
-- Procfile --
web: go run .
-- main.go --
package main

import "net/http"; import "os"

type config struct{ addr string }

func fromEnv(c *config) {
	if p := os.Getenv("PORT"); p != "" {
		c.addr = ":" + p
	}
}
func main() { c := &config{addr: ":8080"}; fromEnv(c); http.ListenAndServe(c.addr, nil) }
`, " => any 8080\nPORT=5123 => any 5123"},
	{"koanf env over yaml", `-- go.mod --
module example.org/dome
go 1.22
require (
	github.com/knadh/koanf/v2 v2.1.1
	github.com/knadh/koanf/parsers/yaml v0.1.0
	github.com/knadh/koanf/providers/file v1.1.0
	github.com/knadh/koanf/providers/env v1.0.0
)
-- config.yml --
server:
  host: 127.0.0.1
  port: 8702
-- main.go --
package main

import "fmt"; import "log"; import "net/http"; import "strings"; import "github.com/knadh/koanf/parsers/yaml"; import "github.com/knadh/koanf/providers/env"; import "github.com/knadh/koanf/providers/file"; import "github.com/knadh/koanf/v2"

var k = koanf.New(".")

func main() {
	if err := k.Load(file.Provider("config.yml"), yaml.Parser()); err != nil {
		log.Fatal(err)
	}
	k.Load(env.Provider("DOME_", ".", func(s string) string {
		return strings.Replace(strings.ToLower(strings.TrimPrefix(s, "DOME_")), "_", ".", -1)
	}), nil)
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", k.String("server.host"), k.Int("server.port")), nil))
}
-- Procfile --
web: go run .
`, " => loopback 8702\nDOME_SERVER_PORT=5123 => loopback 5123"},
	{"cleanenv", `-- go.mod --
module example.org/dome
go 1.22
require github.com/ilyakaznacheev/cleanenv v1.5.0
-- config.yml --
port: "8703"
host: "127.0.0.1"
-- main.go --
package main

import "log"; import "net"; import "net/http"; import "github.com/ilyakaznacheev/cleanenv"

type Config struct {
	Port string ` + "`" + `yaml:"port" env:"PORT" env-default:"5432"` + "`" + `
	Host string ` + "`" + `yaml:"host" env:"HOST" env-default:"localhost"` + "`" + `
}

func main() {
	var cfg Config
	if err := cleanenv.ReadConfig("config.yml", &cfg); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(net.JoinHostPort(cfg.Host, cfg.Port), nil))
}
-- Procfile --
web: go run .
`, " => loopback 8703\nPORT=5123 => loopback 5123"},
	{"cleanenv from the environment alone", `-- go.mod --
module example.org/dome
go 1.22
require github.com/ilyakaznacheev/cleanenv v1.5.0
-- main.go --
package main

import "fmt"; import "log"; import "net/http"; import "github.com/ilyakaznacheev/cleanenv"

type Config struct {
	Server struct {
		Port int    ` + "`" + `env:"PORT" env-default:"8704"` + "`" + `
		Host string ` + "`" + `env:"HOST" env-default:"0.0.0.0"` + "`" + `
	}
}

func main() {
	var cfg Config
	if err := cleanenv.ReadEnv(&cfg); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(fmt.Sprintf("%s:%d", cfg.Server.Host, cfg.Server.Port), nil))
}
-- Procfile --
web: go run .
`, " => any 8704\nPORT=5123 => any 5123\nPORT=abc => exits"},
	{"kingpin", `-- go.mod --
module example.org/dome
go 1.22
require github.com/alecthomas/kingpin/v2 v2.4.0
-- main.go --
package main

import "fmt"; import "net/http"; import "github.com/alecthomas/kingpin/v2"

var (
	port = kingpin.Flag("port", "port").Short('p').Default("8705").Int()
	host = kingpin.Flag("host", "host").Envar("DOME_HOST").Default("127.0.0.1").String()
)

func main() {
	kingpin.Parse()
	http.ListenAndServe(fmt.Sprintf("%s:%d", *host, *port), nil)
}
-- Procfile --
web: go run . --port=5311
`, " => loopback 5311\nDOME_HOST=0.0.0.0 => any 5311"},
	{"go-flags", `-- go.mod --
module example.org/dome
go 1.22
require github.com/jessevdk/go-flags v1.6.1
-- main.go --
package main

import "fmt"; import "net/http"; import "os"; import "github.com/jessevdk/go-flags"

type options struct {
	Port int    ` + "`" + `short:"p" long:"port" default:"8706" description:"port"` + "`" + `
	Host string ` + "`" + `long:"host" env:"DOME_HOST" default:"127.0.0.1"` + "`" + `
}

func main() {
	var opts options
	if _, err := flags.Parse(&opts); err != nil {
		os.Exit(1)
	}
	http.ListenAndServe(fmt.Sprintf("%s:%d", opts.Host, opts.Port), nil)
}
-- Procfile --
web: go run . -p 5312
`, " => loopback 5312\nDOME_HOST=0.0.0.0 => any 5312"},
	{"sethvargo envconfig", `-- go.mod --
module example.org/dome
go 1.22
require github.com/sethvargo/go-envconfig v1.1.0
-- main.go --
package main

import "context"; import "log"; import "net/http"; import "github.com/sethvargo/go-envconfig"

type Config struct {
	HTTP *HTTPConfig ` + "`" + `env:",prefix=HTTP_"` + "`" + `
}

type HTTPConfig struct {
	Port string ` + "`" + `env:"PORT,default=8708"` + "`" + `
	Host string ` + "`" + `env:"HOST,default=127.0.0.1"` + "`" + `
}

func main() {
	var c Config
	if err := envconfig.Process(context.Background(), &c); err != nil {
		log.Fatal(err)
	}
	log.Fatal(http.ListenAndServe(c.HTTP.Host+":"+c.HTTP.Port, nil))
}
-- Procfile --
web: go run .
`, " => loopback 8708\nHTTP_PORT=5123 => loopback 5123"},
}
