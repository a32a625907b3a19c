package port

import (
	"fmt"
	"path"

	"ubique/core/fact"
)

// How each language reads a variable with a number as fallback, by the ending
// of the file; %[1]s is the variable, %[2]d the number.
var reading = map[string]string{
	".py": `int(os.environ.get("%[1]s", %[2]d))`,
	".go": `cmp.Or(os.Getenv("%[1]s"), "%[2]d")`,
	".rb": `ENV.fetch("%[1]s", %[2]d)`, ".ru": `ENV.fetch("%[1]s", %[2]d)`,
	".java": `Integer.parseInt(System.getenv().getOrDefault("%[1]s", "%[2]d"))`,
	".kt":   `System.getenv("%[1]s")?.toInt() ?: %[2]d`,
	".php":  `getenv("%[1]s") ?: "%[2]d"`,
	".cs":   `Environment.GetEnvironmentVariable("%[1]s") ?? "%[2]d"`,
	".rs":   `std::env::var("%[1]s").unwrap_or_else(|_| "%[2]d".into())`,
	".ex":   `System.get_env("%[1]s", "%[2]d")`, ".exs": `System.get_env("%[1]s", "%[2]d")`,
	".properties": `${%[1]s:%[2]d}`, ".yml": `${%[1]s:%[2]d}`, ".yaml": `${%[1]s:%[2]d}`,
	".conf": `${?%[1]s}`,
	".json": `an address made of the variable %[1]s in the code`,
}

// usual is the number that programs of a language have by habit.
var usual = map[string]int{".py": 8000, ".go": 8080, ".java": 8080, ".kt": 8080, ".properties": 8080, ".yml": 8080, ".yaml": 8080, ".rb": 4567, ".ru": 9292, ".php": 8080, ".cs": 8080, ".rs": 8080, ".ex": 4000, ".exs": 4000}

// read is what to write in a file so that the port comes from a variable; a
// number of 0 stands for the usual one.
func read(file string, l *fact.Listener, name string, number int) string {
	end := path.Ext(file)
	if l.Server == "nginx" || l.Server == "apache" { // their settings know no fallback: the image sets one
		if number <= 0 {
			number = 8080
		}
		if end == ".conf" && l.Server == "nginx" {
			return fmt.Sprintf("listen ${%s}; in a file of /etc/nginx/templates, and in the container file: ENV %s=%d", name, name, number)
		}
		return fmt.Sprintf("ENV %s=%d", name, number)
	}
	if number <= 0 {
		if number = usual[end]; number == 0 {
			number = 3000
		}
	}
	if end == ".py" && l.Bind != nil {
		return fmt.Sprintf(`bind = "0.0.0.0:" + os.environ.get("%s", "%d")`, name, number)
	}
	if end == ".go" && l.Bind != nil {
		return fmt.Sprintf(`":" + cmp.Or(os.Getenv("%s"), "%d")`, name, number)
	}
	if l.Server == "deno" {
		return fmt.Sprintf(`Number(Deno.env.get("%s") ?? %d)`, name, number)
	}
	if form, ok := reading[end]; ok {
		return fmt.Sprintf(form, name, number)
	}
	return fmt.Sprintf("process.env.%s || %d", name, number)
}

// anyAddress is how the address of any interface is written where the
// listener is.
func anyAddress(l *fact.Listener) string {
	switch path.Ext(l.HostAt.File) {
	case ".py":
		return `host="0.0.0.0"`
	case ".go":
		return `an address without a host: ":8080"`
	case ".properties", ".yml", ".yaml", ".conf":
		return "0.0.0.0"
	case ".rs":
		return "[0, 0, 0, 0]"
	case ".cs":
		return `"http://+:"`
	case ".ex", ".exs":
		return "ip: {0, 0, 0, 0}"
	}
	switch l.Server {
	case "fastify", "hono":
		return `host: "0.0.0.0"`
	}
	return `"0.0.0.0"`
}
