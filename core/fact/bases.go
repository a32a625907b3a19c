package fact

import "strings"

// BaseCommand is what an image starts by itself, and how to tell it.
type baseCommand struct {
	name, tag string // the last part of the name; what must be in the tag
	words     []string
}

// baseCommands are the official images that start a server by themselves (their
// container files, CMD, read 2026-11).
var baseCommands = []baseCommand{
	{"nginx", "", []string{"nginx", "-g", "daemon off;"}}, {"nginx-unprivileged", "", []string{"nginx", "-g", "daemon off;"}},
	{"httpd", "", []string{"httpd-foreground"}}, {"caddy", "", []string{"caddy", "run", "--config", "/etc/caddy/Caddyfile", "--adapter", "caddyfile"}},
	{"php", "apache", []string{"apache2-foreground"}}, {"php", "fpm", []string{"php-fpm"}}, {"tomcat", "", []string{"catalina.sh", "run"}},
}

// shells are the official images whose own command is a shell or an
// interpreter that waits for input: as a service it ends at once.
var shells = map[string]bool{
	"node": true, "python": true, "ruby": true, "golang": true, "php": true, "openjdk": true, "eclipse-temurin": true, "alpine": true, "debian": true, "ubuntu": true, "busybox": true, "fedora": true, "almalinux": true, "rockylinux": true, "archlinux": true,
	"elixir": true, "erlang": true, "rust": true, "perl": true, "bash": true, "gcc": true, "scratch": true, "sdk": true, "runtime": true, "aspnet": true, "runtime-deps": true, "maven": true, "gradle": true, "composer": true, "bun": true, "deno": true, "julia": true, "swift": true, "clojure": true, "groovy": true, "haskell": true,
}

// Starts gives the command that a base image has of its own. known is false
// for an image that is not in the table: it may start something or nothing.
func (b Base) Starts() (words []string, known bool) {
	name := b.Name[strings.LastIndexByte(b.Name, '/')+1:]
	for _, c := range baseCommands {
		if c.name == name && strings.Contains(b.Tag, c.tag) {
			return c.words, true
		}
	}
	return nil, shells[name]
}
