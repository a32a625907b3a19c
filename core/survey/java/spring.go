package java

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/value"
)

// Where applications of Spring Boot, Quarkus, Micronaut, Helidon and Ktor's
// EngineMain listen is set by properties: of the command line, of the
// environment, of files (Spring Boot reference, "Externalized Configuration";
// Quarkus, "Configuration Reference"; Micronaut, "Application Configuration";
// Helidon, "Config"; Ktor, "Configuration in a file"; read 2026-11).

// properties are the names of one framework.
type properties struct {
	server, port, host   string
	files                []string
	profileKey, profiles string
}

var springBoot = properties{"spring", "server.port", "server.address", []string{"application.properties", "application.yml", "application.yaml", "config/application.properties", "config/application.yml"}, "spring.profiles.active", "SPRING_PROFILES_ACTIVE"}
var quarkus = properties{"quarkus", "quarkus.http.port", "quarkus.http.host", []string{"application.properties", "application.yml", "application.yaml"}, "quarkus.profile", "QUARKUS_PROFILE"}

var micronaut = properties{"micronaut", "micronaut.server.port", "micronaut.server.host", []string{"application.properties", "application.yml", "application.yaml", "application.toml"}, "micronaut.environments", "MICRONAUT_ENVIRONMENTS"}
var helidon = properties{"helidon", "server.port", "server.host", []string{"META-INF/microprofile-config.properties", "application.yaml", "application.yml", "application.properties", "application.conf"}, "mp.config.profile", "MP_CONFIG_PROFILE"}
var ktor = properties{"ktor engine", "ktor.deployment.port", "ktor.deployment.host", []string{"application.conf", "application.yaml", "application.yml"}, "", ""}

var play = properties{"play", "play.server.http.port", "play.server.http.address", []string{"application.conf"}, "", ""}

// Listeners implements survey.Listening.
func (r *Runtime) Listeners(t *source.Tree, c *fact.Component, st *fact.Start) []*fact.Listener {
	p := properties{}
	for _, fw := range c.Frameworks {
		switch fw {
		case "Spring Boot":
			p = springBoot
		case "Quarkus":
			p = quarkus
		case "Micronaut":
			p = micronaut
		case "Helidon":
			p = helidon
		case "Play":
			p = play
		case "Ktor":
			if t.Has(c.Path("src/main/resources/application.conf")) || t.Has(c.Path("src/main/resources/application.yaml")) {
				p = ktor
			}
		}
	}
	if p.server == "" || (p.server == "spring" || p.server == "quarkus") && !web(c) {
		return nil
	}
	l := &fact.Listener{Process: st.Process, Server: p.server, Via: "default", At: st.Final.At, PortAt: st.Final.At, HostAt: st.Final.At}
	if l.At.Line == 0 {
		l.At = st.At
		l.PortAt, l.HostAt = l.At, l.At
	}
	l.Port, l.PortAt = p.value(t, c, st, l, p.port, l.PortAt)
	l.Host, l.HostAt = p.value(t, c, st, l, p.host, l.HostAt)
	p.program(st, l)
	if p.server == "helidon" && l.Port == nil {
		l.Port = value.NotKnown("the port of this version of Helidon without server.port", l.At)
	}
	return []*fact.Listener{l}
}

// web reports whether something declared serves.
func web(c *fact.Component) bool {
	if len(c.Dependencies) == 0 {
		return false
	}
	for _, d := range c.Dependencies {
		if d.Dev {
			continue
		}
		for _, w := range []string{"starter-web", "starter-webflux", "starter-webmvc", "starter-tomcat", "starter-jetty", "starter-undertow", "starter-graphql", "starter-data-rest", "quarkus-rest", "quarkus-resteasy", "quarkus-vertx-http", "quarkus-reactive-routes", "quarkus-undertow", "quarkus-smallrye-graphql"} {
			if strings.Contains(d.Name, w) {
				return true
			}
		}
	}
	return false
}

// value puts together what a property comes to: the command line beats system
// properties, these the environment (fact.Server.Over), that the files.
func (p properties) value(t *source.Tree, c *fact.Component, st *fact.Start, l *fact.Listener, key string, at place.Span) (*value.Value, place.Span) {
	for _, w := range st.Final.Args {
		signs := []string{"--" + key + "=", "-D" + key + "=", "-" + key + "="}
		if p.server == "play" {
			signs = append(signs, "-D"+key[len("play.server."):]+"=")
		}
		if p.server == "ktor engine" {
			signs = []string{"-P:" + key + "=", "-" + key[strings.LastIndexByte(key, '.')+1:] + "="}
		}
		for _, sign := range signs {
			if v, ok := after(w.Value, sign); ok {
				l.Via = "flag"
				if key == p.port {
					l.FlagPort = true
				} else {
					l.FlagHost = true
				}
				return v, w.At
			}
		}
	}
	var v *value.Value
	for _, name := range p.files {
		file := c.Path("src/main/resources/" + name)
		if p.server == "play" {
			file = c.Path("conf/" + name)
		}
		n := property(t, file, key)
		if n == nil && p.server == "play" { // the shorter name
			n = property(t, file, key[len("play.server."):])
		}
		if n == nil {
			continue
		}
		text, _ := n.Scalar()
		at = n.At()
		l.Via = "setting"
		if l.At.File == st.Final.At.File && key == p.port {
			l.At = at
		}
		switch {
		case strings.HasSuffix(name, ".conf"):
			v = substituted(t, file, n.Key)
		case p.server == "ktor engine":
			v = dollar(text, at)
		default:
			v = placeholders(text, at)
		}
		if p.server == "quarkus" && strings.HasSuffix(name, ".properties") { // the profile of a packaged application is prod
			if n := property(t, file, "%prod."+key); n != nil {
				text, _ := n.Scalar()
				at = n.At()
				v = placeholders(text, at)
			}
		}
		break
	}
	// Another profile may set another one.
	for _, e := range t.In(c.Path("src/main/resources")) {
		base := path.Base(e.Path)
		if strings.HasPrefix(base, "application-") && (strings.HasSuffix(base, ".properties") || strings.HasSuffix(base, ".yml") || strings.HasSuffix(base, ".yaml")) {
			if n := property(t, e.Path, key); n != nil {
				profile := strings.TrimSuffix(strings.TrimPrefix(base, "application-"), path.Ext(base))
				text, _ := n.Scalar()
				is := &value.Value{Kind: value.Op, Text: "==", At: n.At(), Kids: []*value.Value{{Kind: value.Env, Text: p.profiles, Unset: value.ReadsUndef, At: n.At()}, value.Text(profile, n.At())}}
				if active := p.active(t, c, st); active == profile {
					is = &value.Value{Kind: value.Bool, Num: 1, At: n.At()}
				}
				other := v
				if other == nil {
					other = &value.Value{Kind: value.Undef, At: n.At()}
				}
				v = &value.Value{Kind: value.Cond, At: n.At(), Kids: []*value.Value{is, placeholders(text, n.At()), other}}
				l.Via = "setting"
			}
		}
	}
	return v, at
}

// active is the profile that a flag, or else the main file, chooses.
func (p properties) active(t *source.Tree, c *fact.Component, st *fact.Start) string {
	for _, w := range st.Final.Args {
		for _, sign := range []string{"--" + p.profileKey + "=", "-D" + p.profileKey + "="} {
			if name, ok := strings.CutPrefix(w.Text, sign); ok && w.Literal() {
				return name
			}
		}
	}
	for _, name := range p.files {
		if n := property(t, c.Path("src/main/resources/"+name), p.profileKey); n != nil {
			return n.Str()
		}
	}
	return ""
}

// program is what the program itself sets: a system property before it starts,
// the factory of the web server, defaults under everything else (Spring Boot
// reference, "Customizing Embedded Servlet Containers").
func (p properties) program(st *fact.Start, l *fact.Listener) {
	if st.Program == nil || p.server != "spring" && p.server != "quarkus" {
		return
	}
	for _, f := range st.Program.Loader.Loaded() {
		if f.Lang != code.Java && f.Lang != code.Kotlin {
			continue
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !callee.Is(code.Member) || len(site.Guards) > 0 {
				continue
			}
			args, _ := st.Program.Arguments(site)
			at := f.At(site.Node)
			switch {
			case callee.Name == "setProperty" && callee.Kid(0).Dotted() == "System" && len(args) == 2 && args[0].Kind == value.Str:
				switch args[0].Text {
				case p.port:
					l.Port, l.PortAt, l.At, l.Via, l.FlagPort = args[1], at, at, "code", true
				case p.host:
					l.Host, l.HostAt, l.FlagHost = args[1], at, true
				}
			case callee.Name == "setPort" && p.server == "spring" && len(args) == 1 && strings.Contains(string(f.Src), "WebServerFactory"):
				l.Port, l.PortAt, l.At, l.Via, l.FlagPort = args[0], at, at, "code", true
			case callee.Name == "setDefaultProperties" && len(args) == 1:
				for i, k := range args[0].Keys {
					if k == p.port && l.Port == nil {
						l.Port, l.PortAt, l.At, l.Via = args[0].Kids[i], at, at, "code"
					}
				}
				if n := site.Node.Kid(1); n.Is(code.Call) && len(n.Kids) >= 3 && n.Kids[1].Is(code.String) && n.Kids[1].Name == p.port && l.Port == nil {
					l.Port, l.PortAt, l.At, l.Via = st.Program.Expr(n.Kids[2], site.Scope), at, at, "code"
				}
			}
		}
	}
}

// substituted is a key of a HOCON file: what is set later counts, ${?NAME}
// where the variable is set.
func substituted(t *source.Tree, file, key string) *value.Value {
	d, _ := survey.Document(t, file)
	var v *value.Value
	for _, n := range d.Items() {
		if n.Key != key {
			continue
		}
		s := n.Str()
		switch {
		case strings.HasPrefix(s, "${?") && strings.HasSuffix(s, "}") && strings.Count(s, "${") == 1:
			v = value.EnvOr(s[3:len(s)-1], v, n.At())
		case strings.HasPrefix(s, "${") && strings.HasSuffix(s, "}") && strings.Count(s, "${") == 1:
			v = &value.Value{Kind: value.Env, Text: s[2 : len(s)-1], Unset: value.Raises, At: n.At()}
		default:
			v = value.Text(s, n.At())
		}
	}
	return v
}

// dollar is a value in the YAML of Ktor: "$PORT" or "$PORT:8080".
func dollar(s string, at place.Span) *value.Value {
	name, ok := strings.CutPrefix(s, "$")
	if !ok {
		return value.Text(s, at)
	}
	name = strings.Trim(name, "{}")
	name, def, has := strings.Cut(name, ":")
	if name, ok = strings.CutPrefix(name, "?"); ok {
		return value.EnvOr(name, nil, at)
	}
	if has {
		return value.EnvOr(name, value.Text(def, at), at)
	}
	return &value.Value{Kind: value.Env, Text: name, Unset: value.Raises, At: at}
}

// after cuts a text off the front of a value.
func after(v *value.Value, sign string) (*value.Value, bool) {
	if v == nil {
		return nil, false
	}
	if v.Kind == value.Str {
		rest, ok := strings.CutPrefix(v.Text, sign)
		return value.Text(rest, v.At), ok
	}
	if v.Kind == value.Op && v.Text == "concat" && len(v.Kids) > 0 && v.Kids[0].Kind == value.Str {
		if rest, ok := strings.CutPrefix(v.Kids[0].Text, sign); ok {
			return value.Concat(append([]*value.Value{value.Text(rest, v.At)}, v.Kids[1:]...)...), true
		}
	}
	return nil, false
}

// property finds a dotted key in a properties file or a YAML document; names
// with dashes and in camel case are the same.
func property(t *source.Tree, file, key string) *document.Node {
	d, _ := survey.Document(t, file)
	if d == nil {
		return nil
	}
	if strings.HasSuffix(file, ".properties") || strings.HasSuffix(file, ".conf") {
		return d.Get(key)
	}
	if n := d.Get(key); n != nil {
		return n
	}
	return d.Get(strings.Split(key, ".")...)
}

// placeholders puts ${NAME:default} together; names are those of variables.
func placeholders(s string, at place.Span) *value.Value {
	var parts []*value.Value
	for s != "" {
		i := strings.Index(s, "${")
		if i < 0 {
			parts = append(parts, value.Text(s, at))
			break
		}
		depth, end := 0, -1
		for j := i + 1; j < len(s); j++ {
			switch s[j] {
			case '{':
				depth++
			case '}':
				if depth--; depth == 0 {
					end = j
				}
			}
			if end >= 0 {
				break
			}
		}
		if end < 0 {
			parts = append(parts, value.Text(s, at))
			break
		}
		if i > 0 {
			parts = append(parts, value.Text(s[:i], at))
		}
		name, def, has := strings.Cut(s[i+2:end], ":")
		v := &value.Value{Kind: value.Env, Text: variable(name), Unset: value.Raises, At: at}
		if has {
			v.Unset = value.ReadsUndef
			v = &value.Value{Kind: value.Op, Text: "??", At: at, Kids: []*value.Value{v, placeholders(def, at)}}
		}
		parts = append(parts, v)
		s = s[end+1:]
	}
	if len(parts) == 0 {
		return value.Text("", at)
	}
	return value.Concat(parts...)
}

// variable is the variable that a property's name is looked up under (Spring
// Boot reference, "Binding From Environment Variables").
func variable(name string) string {
	if name == strings.ToUpper(name) {
		return name
	}
	return strings.ToUpper(strings.NewReplacer(".", "_", "-", "").Replace(name))
}
