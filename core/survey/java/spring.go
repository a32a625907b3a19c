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

var springBoot = properties{"spring", "server.port", "server.address", []string{"config/application.properties", "config/application.yml", "config/application.yaml", "application.properties", "application.yml", "application.yaml"}, "spring.profiles.active", "SPRING_PROFILES_ACTIVE"}
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
	signs := []string{"--" + key + "=", "-D" + key + "=", "-" + key + "="}
	if p.server == "play" {
		signs = append(signs, "-D"+key[len("play.server."):]+"=")
	}
	if p.server == "ktor engine" {
		signs = []string{"-P:" + key + "=", "-" + key[strings.LastIndexByte(key, '.')+1:] + "="}
	}
	if v, flagAt := onCommand(st, signs); v != nil {
		l.Via = "flag"
		if key == p.port {
			l.FlagPort = true
		} else {
			l.FlagHost = true
		}
		return v, flagAt
	}
	var v *value.Value
	for _, name := range p.files {
		file := c.Path(p.folder() + name)
		if w := p.inFile(t, c, st, file, key); w != nil {
			v, at, l.Via = w, w.At, "setting"
			if l.At.File == st.Final.At.File && key == p.port {
				l.At = at
			}
			break
		}
	}
	// Files of profiles come after it.
	for _, e := range t.In(c.Path(strings.TrimSuffix(p.folder(), "/"))) {
		base := path.Base(e.Path)
		profile, ok := strings.CutPrefix(strings.TrimSuffix(base, path.Ext(base)), "application-")
		if !ok {
			continue
		}
		if w := p.inFile(t, c, st, e.Path, key); w != nil {
			v, l.Via = choose(p.is(t, c, st, profile, w.At), w, v), "setting"
		}
	}
	return v, at
}

// folder is where the files of settings lie in the source.
func (p properties) folder() string {
	if p.server == "play" {
		return "conf/"
	}
	return "src/main/resources/"
}

// choose is a value where a condition holds, and the one before elsewhere.
func choose(is, v, before *value.Value) *value.Value {
	if before == nil {
		before = &value.Value{Kind: value.Undef, At: v.At}
	}
	return &value.Value{Kind: value.Cond, At: v.At, Kids: []*value.Value{is, v, before}}
}

// is the condition that a profile is active. A flag or the settings choose it,
// else the variable, which may name several; Quarkus is packaged for prod.
func (p properties) is(t *source.Tree, c *fact.Component, st *fact.Start, profile string, at place.Span) *value.Value {
	if strings.ContainsAny(profile, "&|!( ") {
		return value.NotKnown("an expression of profiles", at)
	}
	names := &value.Value{Kind: value.Op, Text: "split", At: at, Kids: []*value.Value{p.active(t, c, st, at), value.Text(",", at)}}
	return &value.Value{Kind: value.Op, Text: "in", At: at, Kids: []*value.Value{value.Text(profile, at), names}}
}

// inFile is a property in one file: in each of its documents, under the profile
// that a document or a key of Quarkus is for; nil where it is nowhere.
func (p properties) inFile(t *source.Tree, c *fact.Component, st *fact.Start, file, key string) *value.Value {
	if strings.HasSuffix(file, ".conf") {
		v := substituted(t, file, key)
		if short, ok := strings.CutPrefix(key, "play.server."); v == nil && ok {
			v = substituted(t, file, short)
		}
		return v
	}
	read := func(n *document.Node) *value.Value {
		text, _ := n.Scalar()
		if p.server == "ktor engine" {
			return dollar(text, n.At())
		}
		return p.placeholders(t, c, st, text, n.At(), 0)
	}
	var v *value.Value
	for _, d := range survey.Documents(t, file) {
		n := lookup(d, file, key)
		if n != nil {
			w := read(n)
			for _, on := range []string{"spring.config.activate.on-profile", "spring.profiles"} {
				if profile := lookup(d, file, on); profile != nil {
					w = choose(p.is(t, c, st, profile.Str(), w.At), w, v)
				}
			}
			v = w
		}
		if p.server != "quarkus" {
			continue
		}
		for _, k := range d.Items() { // %prod.key=, %prod: of YAML
			profile, rest, dotted := strings.Cut(strings.TrimPrefix(k.Key, "%"), ".")
			if !strings.HasPrefix(k.Key, "%") {
				continue
			}
			m := k
			if !dotted {
				m = lookup(k, file, key)
			} else if rest != key {
				m = nil
			}
			if m != nil {
				w := read(m)
				v = choose(p.is(t, c, st, profile, w.At), w, v)
			}
		}
	}
	return v
}

// onCommand is what the command line gives behind one of several signs: a sign beats those
// that stand after it in the list, wherever on the line it is; nil for none.
func onCommand(st *fact.Start, signs []string) (*value.Value, place.Span) {
	for _, sign := range signs {
		for _, w := range st.Final.Args {
			if v, ok := after(w.Value, sign); ok {
				return v, w.At
			}
		}
	}
	return nil, place.Span{}
}

// active are the profiles that a flag, the variable, or else the main file
// chooses, with commas between them.
func (p properties) active(t *source.Tree, c *fact.Component, st *fact.Start, at place.Span) *value.Value {
	if v, _ := onCommand(st, []string{"--" + p.profileKey + "=", "-D" + p.profileKey + "="}); v != nil {
		return v
	}
	v := value.Text(map[string]string{"quarkus": "prod", "spring": "default"}[p.server], at)
	for _, name := range p.files {
		n := property(t, c.Path(p.folder()+name), p.profileKey)
		if n == nil || p.profileKey == "" {
			continue
		}
		text, _ := n.Scalar()
		if n.Kind == document.List {
			var names []string
			for _, k := range n.Kids {
				names = append(names, k.Str())
			}
			text = strings.Join(names, ",")
		}
		v = p.placeholders(t, c, st, strings.ReplaceAll(text, " ", ""), n.At(), 0)
		break
	}
	return value.EnvOr(p.profiles, v, at)
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
	return lookup(d, file, key)
}

func lookup(d *document.Node, file, key string) *document.Node {
	if d == nil {
		return nil
	}
	if n := d.Get(key); n != nil || strings.HasSuffix(file, ".properties") {
		return n
	}
	return d.Get(strings.Split(key, ".")...)
}

// placeholders puts ${NAME:default} together: names are those of variables, and
// of other properties.
func (p properties) placeholders(t *source.Tree, c *fact.Component, st *fact.Start, s string, at place.Span, depth int) *value.Value {
	return value.Fill(s, "${", "}", at, func(inside string) *value.Value {
		name, def, has := strings.Cut(inside, ":")
		v := value.Variable(variable(name), value.Raises, at)
		var other *value.Value
		if has {
			other = p.placeholders(t, c, st, def, at, depth+1)
		}
		if depth < 8 && name != strings.ToUpper(name) { // a property of the files
			for _, file := range p.files {
				if w := p.inFile(t, c, st, c.Path(p.folder()+file), name); w != nil {
					other = w
					break
				}
			}
		}
		if other != nil {
			v.Unset = value.ReadsUndef
			v = &value.Value{Kind: value.Op, Text: "??", At: at, Kids: []*value.Value{v, other}}
		}
		return v
	})
}

// variable is the variable that a property's name is looked up under (Spring
// Boot reference, "Binding From Environment Variables").
func variable(name string) string {
	if name == strings.ToUpper(name) {
		return name
	}
	return strings.ToUpper(strings.NewReplacer(".", "_", "-", "").Replace(name))
}
