package java

import (
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/value"
)

// Where applications of Spring Boot and Quarkus listen is set by properties:
// of the command line, of the environment, of files (Spring Boot reference,
// "Externalized Configuration"; Quarkus, "Configuration Reference"; read
// 2026-11).

// properties are the names of one framework.
type properties struct {
	server, port, host   string
	files                []string
	profileKey, profiles string
}

var springBoot = properties{"spring", "server.port", "server.address", []string{"application.properties", "application.yml", "application.yaml", "config/application.properties", "config/application.yml"}, "spring.profiles.active", "SPRING_PROFILES_ACTIVE"}
var quarkus = properties{"quarkus", "quarkus.http.port", "quarkus.http.host", []string{"application.properties", "application.yml", "application.yaml"}, "quarkus.profile", "QUARKUS_PROFILE"}

// Listeners implements survey.Listening.
func (r *Runtime) Listeners(t *source.Tree, c *fact.Component, st *fact.Start) []*fact.Listener {
	p := properties{}
	for _, fw := range c.Frameworks {
		switch fw {
		case "Spring Boot":
			p = springBoot
		case "Quarkus":
			p = quarkus
		}
	}
	if p.server == "" || !web(c) {
		return nil
	}
	l := &fact.Listener{Process: st.Process, Server: p.server, Via: "default", At: st.Final.At, PortAt: st.Final.At, HostAt: st.Final.At}
	if l.At.Line == 0 {
		l.At = st.At
		l.PortAt, l.HostAt = l.At, l.At
	}
	l.Port, l.PortAt = p.value(t, c, st, l, p.port, l.PortAt)
	l.Host, l.HostAt = p.value(t, c, st, l, p.host, l.HostAt)
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
		for _, sign := range []string{"--" + key + "=", "-D" + key + "="} {
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
		n := property(t, file, key)
		if n == nil {
			continue
		}
		text, _ := n.Scalar()
		at = n.At()
		l.Via = "setting"
		if l.At.File == st.Final.At.File && key == p.port {
			l.At = at
		}
		v = placeholders(text, at)
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
				if active := property(t, c.Path("src/main/resources/application.properties"), p.profileKey); active.Str() == profile {
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
	if strings.HasSuffix(file, ".properties") {
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
