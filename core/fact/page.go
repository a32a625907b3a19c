package fact

import (
	"fmt"
	"strings"
)

// ServersPage is the page of the documentation that shows the servers and what
// they do by themselves, in Markdown.
func ServersPage() string {
	var b strings.Builder
	b.WriteString(`# Servers and what they do by themselves

Made by ` + "`go generate`" + ` in core/fact from the table that Ubique computes with. *Measured*
means: started, and its listening sockets read from the kernel; the rest is as
the documentation named says. *Interface* and *port* are those without anything
set. A variable that a server reads by itself counts where neither a flag nor the
code gives a port.

| server | interface | port | reads by itself | port is null | port is empty | port is no number | version | source |
| --- | --- | --- | --- | --- | --- | --- | --- | --- |
`)
	for _, n := range Notes {
		s := Servers[n.Key]
		port := "must be given"
		switch {
		case s.Port > 0:
			port = fmt.Sprint(s.Port)
		case s.NilPort == "random":
			port = "the kernel chooses"
		}
		var reads []string
		for _, name := range []string{s.PortEnv, s.PortEnvs, s.HostEnv, s.SocketEnv, s.Address, s.Over, s.OverHost} {
			for name := range strings.FieldsSeq(name) {
				reads = append(reads, "`"+name+"`")
			}
		}
		for name := range strings.FieldsSeq(modes[n.Key]) {
			reads = append(reads, "`"+name+"`")
		}
		fmt.Fprintf(&b, "| %s | %s | %s | %s | %s | %s | %s | %s | %s |\n", cell(n.Stands), cell(s.Host), port, cell(strings.Join(reads, ", ")), does(s.NilPort), does(s.EmptyPort), does(s.TextPort), cell(n.Version), cell(n.Source))
	}
	b.WriteString(`
gunicorn and puma take ` + "`PORT`" + ` only where nothing is bound. Hosts of Ruby's servers on
loopback depend on ` + "`RACK_ENV`, `APP_ENV` or `RAILS_ENV`" + `: in development loopback,
else any interface. Kestrel reads ` + "`ASPNETCORE_URLS`, `DOTNET_URLS`" + `, the setting Urls and
` + "`ASPNETCORE_HTTP_PORTS`" + `, in that order, where the code sets nothing.
`)
	return b.String()
}

func does(s string) string {
	switch s {
	case "":
		return "–"
	case "exits":
		return "ends"
	case "default":
		return "as without"
	case "random":
		return "the kernel chooses"
	case "unix":
		return "a unix socket"
	}
	return s
}

func cell(s string) string {
	if s == "" {
		return "–"
	}
	return strings.ReplaceAll(s, "|", `\|`)
}
