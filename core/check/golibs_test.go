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
}
