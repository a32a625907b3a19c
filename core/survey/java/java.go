// Package java surveys components in Java and Kotlin: Maven and Gradle builds
// in both of its languages, their modules, and the artefact that they make
// (Maven POM reference; Gradle user manual; read 2026-11).
package java

import (
	"bytes"
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of Java and Kotlin.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of Java for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "java" }

// frameworks are parts of the coordinates of dependencies and plugins, by the
// name to show.
var frameworks = [][2]string{
	{"org.springframework.boot", "Spring Boot"}, {"io.quarkus", "Quarkus"}, {"io.micronaut", "Micronaut"}, {"io.helidon", "Helidon"}, {"io.vertx", "Vert.x"}, {"io.javalin", "Javalin"}, {"io.ktor", "Ktor"}, {"com.sparkjava", "Spark"}, {"io.dropwizard", "Dropwizard"}, {"org.playframework", "Play"}, {"com.typesafe.play", "Play"},
	{"org.eclipse.jetty", "Jetty"}, {"io.undertow", "Undertow"}, {"org.apache.tomcat.embed", "Tomcat"}, {"com.typesafe.play", "Play"}, {"org.playframework", "Play"}, {"org.http4k", "http4k"}, {"jakarta.servlet", "Servlet"}, {"javax.servlet", "Servlet"}, {"org.glassfish.jersey", "Jersey"},
}

var gradleFiles = []string{"build.gradle.kts", "build.gradle"}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	switch {
	case f.Has("pom.xml"):
		d, broken := survey.Document(t, survey.Join(f.Dir, "pom.xml"))
		if broken {
			return 2
		}
		p := d.Get("project")
		if p.Get("packaging").Str() == "pom" && p.Get("modules") != nil {
			return 1
		}
		if served(t, f.Dir) || plugin(p, "spring-boot-maven-plugin") != nil || plugin(p, "quarkus-maven-plugin") != nil || p.Get("packaging").Str() == "war" || plugin(p, "exec-maven-plugin") != nil || described(f) {
			return 2
		}
		return 1
	case f.Has("build.gradle"), f.Has("build.gradle.kts"):
		name := survey.Join(f.Dir, "build.gradle")
		if f.Has("build.gradle.kts") {
			name += ".kts"
		}
		if survey.Mentions(t, name, "org.springframework.boot", "application", "mainClass", "io.quarkus", "io.ktor.plugin", "io.micronaut", "'war'", "\"war\"", "shadow") && (t.HasDir(survey.Join(f.Dir, "src/main")) || !hasModules(t, f)) {
			return 2
		}
		if served(t, f.Dir) || described(f) {
			return 2
		}
		return 1
	case f.Has("build.sbt") && survey.Mentions(t, survey.Join(f.Dir, "build.sbt"), "PlayJava", "PlayScala", "PlayService"):
		return 2
	}
	for name := range f.Names { // files without a build
		if strings.HasSuffix(name, ".java") && survey.Mentions(t, survey.Join(f.Dir, name), "void main(") {
			if described(f) {
				return 2
			}
			return survey.Weak
		}
	}
	return 0
}

func described(f survey.Folder) bool { return f.Has("Procfile") || f.Has("Dockerfile") }

func hasModules(t *source.Tree, f survey.Folder) bool {
	return survey.Mentions(t, survey.Join(f.Dir, "settings.gradle"), "include") || survey.Mentions(t, survey.Join(f.Dir, "settings.gradle.kts"), "include")
}

// served looks for a main method or a server in the sources.
func served(t *source.Tree, dir string) bool {
	n := 0
	for _, e := range t.Below(survey.Join(dir, "src/main")) {
		if strings.HasSuffix(e.Path, ".java") || strings.HasSuffix(e.Path, ".kt") {
			if n++; n > 300 {
				return false
			}
			if survey.Mentions(t, e.Path, "public static void main", "static void main", "fun main(", "@SpringBootApplication", "@QuarkusMain") {
				return true
			}
		}
	}
	return false
}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	switch {
	case f.Has("pom.xml"):
		(&maven{t: t, c: c}).read(c.Path("pom.xml"))
	case f.Has("build.gradle"), f.Has("build.gradle.kts"):
		for _, n := range gradleFiles {
			if f.Has(n) {
				(&gradle{t: t, c: c}).read(c.Path(n))
				break
			}
		}
		survey.TakeLocks(t, c, r.locks, false, "gradle")
	case f.Has("build.sbt"):
		staged(t, c, c.Path("build.sbt"))
	}
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "java")...)
	for _, d := range c.Dependencies {
		for _, fw := range frameworks {
			if strings.HasPrefix(d.Name, fw[0]) && !d.Dev {
				add(c, fw[1])
			}
		}
	}
}

// staged takes from a build of sbt what Play makes of it: a folder with a start script of the
// project's name, written in small letters (Play 3.0, "Deploying your application", sbt stage). Its dependencies are
// not read.
func staged(t *source.Tree, c *fact.Component, file string) {
	c.Complete = false
	c.Manifests = append(c.Manifests, &fact.Manifest{File: file, Manager: "sbt"})
	add(c, "Play")
	f, err := t.Code(file)
	if err != nil {
		return
	}
	for n := 1; n <= f.Lines().Count(); n++ {
		key, v, ok := strings.Cut(f.Lines().Text(n), ":=")
		v = strings.Trim(strings.TrimSpace(v), ",")
		if !ok || strings.TrimSpace(key) != "name" || len(v) < 3 || v[0] != '"' || v[len(v)-1] != '"' {
			continue
		}
		c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "binary", Path: c.Path("target/universal/stage/bin/" + strings.ToLower(v[1:len(v)-1])), Detail: "a start script, with the libraries beside it", Build: "sbt stage", At: survey.Line1(file)})
		return
	}
}

func add(c *fact.Component, framework string) {
	for _, x := range c.Frameworks {
		if x == framework {
			return
		}
	}
	c.Frameworks = append(c.Frameworks, framework)
}

// ---- Maven

type maven struct {
	t     *source.Tree
	c     *fact.Component
	props map[string]*document.Node
}

// plugin finds a plugin of the build by the name of its artefact.
func plugin(p *document.Node, name string) *document.Node {
	for _, where := range []*document.Node{p.Get("build", "plugins"), p.Get("build", "pluginManagement", "plugins")} {
		for _, x := range where.All("plugin") {
			if x.Get("artifactId").Str() == name {
				return x
			}
		}
	}
	return nil
}

// own finds a plugin that the module itself uses.
func own(p *document.Node, name string) *document.Node {
	for _, x := range p.Get("build", "plugins").All("plugin") {
		if x.Get("artifactId").Str() == name {
			return x
		}
	}
	return nil
}

// parents lists a POM and the ones of the tree that it inherits from.
func (m *maven) parents(name string) []*document.Node {
	var list []*document.Node
	for depth := 0; depth < 8; depth++ {
		d, broken := survey.Document(m.t, name)
		if broken && depth == 0 {
			m.c.Complete, m.c.Broken = false, true
		}
		p := d.Get("project")
		if p == nil {
			break
		}
		list = append(list, p)
		parent := p.Get("parent")
		if parent == nil {
			break
		}
		rel := "../pom.xml"
		if x := parent.Get("relativePath"); x != nil {
			rel = x.Str()
		}
		if rel == "" {
			break
		}
		at, ok := source.Join(source.Dir(name), rel)
		if !ok {
			break
		}
		if !strings.HasSuffix(at, ".xml") {
			at = survey.Join(at, "pom.xml")
		}
		if next, _ := survey.Document(m.t, at); next.Get("project", "artifactId").Str() != parent.Get("artifactId").Str() {
			break
		}
		name = at
	}
	return list
}

// text puts properties into a text; ok is false where one is not known.
func (m *maven) text(s string, depth int) (string, bool) {
	for depth < 8 {
		i := strings.Index(s, "${")
		if i < 0 {
			return s, true
		}
		j := strings.IndexByte(s[i:], '}')
		if j < 0 {
			return s, false
		}
		v, ok := m.props[s[i+2:i+j]]
		if !ok {
			return s, false
		}
		s = s[:i] + v.Str() + s[i+j+1:]
		depth++
	}
	return s, false
}

func (m *maven) read(name string) {
	m.c.Manifests = append(m.c.Manifests, &fact.Manifest{File: name, Manager: "maven"})
	poms := m.parents(name)
	m.props = map[string]*document.Node{}
	for _, p := range poms {
		for _, x := range p.Get("properties").Items() {
			if _, ok := m.props[x.Key]; !ok {
				m.props[x.Key] = x
			}
		}
	}
	if len(poms) == 0 {
		return
	}
	p := poms[0]
	for _, k := range []string{"version", "artifactId", "groupId"} {
		for _, x := range poms {
			if v := x.Get(k); v != nil {
				m.props["project."+k] = v
				break
			}
			if v := x.Get("parent", k); v != nil && k != "artifactId" {
				m.props["project."+k] = v
				break
			}
		}
	}
	m.pins(poms)
	managed := map[string]*document.Node{}
	imported := false
	for _, x := range poms {
		for _, d := range x.Get("dependencyManagement", "dependencies").All("dependency") {
			key := d.Get("groupId").Str() + ":" + d.Get("artifactId").Str()
			imported = imported || d.Get("scope").Str() == "import"
			if managed[key] == nil {
				managed[key] = d.Get("version")
			}
		}
	}
	parented := len(poms[len(poms)-1].Get("parent").Items()) > 0
	seen := map[string]*document.Node{}
	for i, x := range poms {
		for _, d := range x.Get("dependencies").All("dependency") {
			g, _ := m.text(d.Get("groupId").Str(), 0)
			a, _ := m.text(d.Get("artifactId").Str(), 0)
			key := g + ":" + a + ":" + d.Get("classifier").Str() + d.Get("type").Str()
			if i > 0 && seen[key] != nil {
				continue
			}
			v := d.Get("version")
			if v == nil {
				v = managed[g+":"+a]
			}
			spec, known := m.text(v.Str(), 0)
			dep := survey.Declare(g+":"+a, "", version.Maven, d.KeyAt().File, d.Get("artifactId").At())
			if spec != "" && known {
				dep = survey.Declare(g+":"+a, spec, version.Maven, d.KeyAt().File, d.Get("artifactId").At())
			}
			dep.Pinned = dep.Pinned || spec == "" && (parented || imported) || spec != "" && !known
			dep.Group = d.Get("scope").Str()
			dep.Dev = dep.Group == "test"
			dep.Optional = d.Get("optional").Str() == "true"
			if spec == "LATEST" || spec == "RELEASE" {
				dep.Pinned = false
			}
			m.c.Dependencies = append(m.c.Dependencies, dep)
			seen[key] = d
		}
		if parent := x.Get("parent"); strings.HasPrefix(parent.Get("groupId").Str(), "org.springframework.boot") {
			add(m.c, "Spring Boot")
		}
	}
	m.artefact(p, name)
}

// pins reads which Java the build runs with, and which the classes are
// compiled for (plugins toolchains, enforcer and compiler of Maven).
func (m *maven) pins(poms []*document.Node) {
	for _, p := range poms {
		if v := plugin(p, "maven-toolchains-plugin").Get("configuration", "toolchains", "jdk", "version"); v.Str() != "" {
			m.pin("toolchain", v)
			break
		}
	}
	for _, p := range poms {
		for _, e := range plugin(p, "maven-enforcer-plugin").Get("executions").All("execution") {
			if v := e.Get("configuration", "rules", "requireJavaVersion", "version"); v.Str() != "" {
				pin := fact.Pin{What: "java", Text: v.Text, From: "enforcer", Rank: survey.RankManifest, At: v.At(), Lower: true}
				if pin.Set, pin.Known = version.Maven(v.Text); pin.Known && pin.Set.Single() { // a bare version is a lower bound here
					pin.Set, pin.Known = version.AtLeast(v.Text)
				}
				m.c.Pins = append(m.c.Pins, pin)
			}
		}
	}
	compiler := func(p *document.Node, key string) *document.Node {
		return plugin(p, "maven-compiler-plugin").Get("configuration", key)
	}
	for _, key := range []string{"release", "target", "source"} {
		for _, p := range poms {
			v := compiler(p, key)
			if v == nil {
				v = p.Get("properties", "maven.compiler."+key)
			}
			if v.Str() == "" {
				continue
			}
			m.pin("compiler release", v)
			return
		}
	}
	for _, key := range []string{"java.version", "jdk.version", "kotlin.compiler.jvmTarget"} {
		if v := m.props[key]; v.Str() != "" {
			m.pin("java.version", v)
			return
		}
	}
}

func (m *maven) pin(from string, v *document.Node) {
	at := v
	for range 4 { // through ${…} to where the number stands
		name, ok := strings.CutPrefix(at.Str(), "${")
		if !ok {
			break
		}
		next := m.props[strings.TrimSuffix(name, "}")]
		if next == nil {
			break
		}
		at = next
	}
	if at.Str() != "" && !strings.Contains(at.Str(), "$") {
		m.c.Pins = append(m.c.Pins, survey.ReadPin("java", from, at.Text, survey.RankManifest, at.At()))
	}
}

// artefact says what the build makes: its name, and whether it holds what it
// needs to run.
func (m *maven) artefact(p *document.Node, file string) {
	id := p.Get("artifactId").Str()
	ver, _ := m.text(m.props["project.version"].Str(), 0)
	name := id + "-" + ver
	at := p.Get("artifactId").At()
	if n := p.Get("build", "finalName"); n.Str() != "" {
		name, _ = m.text(n.Text, 0)
		at = n.At()
	}
	kind := p.Get("packaging").Str()
	if kind == "" {
		kind = "jar"
	}
	a := fact.Artefact{Kind: kind, Path: m.c.Path("target/" + name + "." + kind), Detail: "plain", Build: "mvn package", At: at}
	if m.t.Has(m.c.Path("mvnw")) {
		a.Build = "./mvnw package"
	}
	switch {
	case own(p, "spring-boot-maven-plugin") != nil:
		a.Detail = "fat"
		if cl := own(p, "spring-boot-maven-plugin").Get("configuration", "classifier"); cl.Str() != "" {
			a.Path = m.c.Path("target/" + name + "-" + cl.Text + "." + kind)
		}
	case own(p, "quarkus-maven-plugin") != nil:
		a.Path, a.Detail = m.c.Path("target/quarkus-app/quarkus-run.jar"), "a folder with its libraries beside it"
		if v := m.props["quarkus.package.jar.type"]; v.Str() == "uber-jar" {
			a.Path, a.Detail = m.c.Path("target/"+name+"-runner.jar"), "fat"
		}
	case own(p, "maven-shade-plugin") != nil:
		a.Detail = "fat"
	case own(p, "maven-assembly-plugin") != nil:
		a.Path, a.Detail = m.c.Path("target/"+name+"-jar-with-dependencies.jar"), "fat"
	case own(p, "maven-jar-plugin").Get("configuration", "archive", "manifest", "mainClass") != nil:
		a.Detail = "thin, with a main class"
	}
	_ = file
	m.c.Artefacts = append(m.c.Artefacts, a)
}

// ---- Gradle

type gradle struct {
	t       *source.Tree
	c       *fact.Component
	f       *code.File
	plugins map[string]bool
	catalog *document.Node
	name    string
	vars    map[string]string
}

// configurations of dependencies; those of tests and of the build are for
// development.
var configurations = map[string]bool{
	"implementation": false, "api": false, "compile": false, "runtimeOnly": false, "runtime": false, "compileOnly": false, "developmentOnly": true, "annotationProcessor": false, "kapt": false, "ksp": false,
	"testImplementation": true, "testRuntimeOnly": true, "testCompileOnly": true, "testCompile": true, "androidTestImplementation": true,
}

func (g *gradle) read(name string) {
	lang := code.Groovy
	if strings.HasSuffix(name, ".kts") {
		lang = code.Kotlin
	}
	g.f = survey.Code(g.t, name, lang)
	g.c.Manifests = append(g.c.Manifests, &fact.Manifest{File: name, Manager: "gradle"})
	if g.f == nil {
		g.c.Complete = false
		return
	}
	g.plugins, g.vars = map[string]bool{}, map[string]string{}
	for d := g.c.Dir; ; d = source.Dir(d) {
		if cat := survey.Join(d, "gradle/libs.versions.toml"); g.t.Has(cat) {
			g.catalog, _ = survey.Document(g.t, cat)
		}
		for _, n := range []string{"settings.gradle", "settings.gradle.kts"} {
			if s := survey.Join(d, n); g.t.Has(s) && g.name == "" && d == g.c.Dir {
				l := code.Groovy
				if strings.HasSuffix(n, ".kts") {
					l = code.Kotlin
				}
				if f := survey.Code(g.t, s, l); f != nil {
					g.settings(f)
				}
			}
		}
		if d == "" {
			break
		}
	}
	defer g.inherited()
	g.name = or(g.name, path.Base(g.c.Dir))
	if g.name == "." || g.name == "" {
		g.name = "app"
	}
	g.block(g.f.Body, "")
	g.artefact(name)
}

// inherited reads the Java version that the build above the module sets, or a
// plugin of the build's own, where the module itself sets none.
func (g *gradle) inherited() {
	for _, p := range g.c.Pins {
		if p.What == "java" {
			return
		}
	}
	pins := func(name string) {
		lang := code.Groovy
		if strings.HasSuffix(name, ".kts") {
			lang = code.Kotlin
		}
		f := survey.Code(g.t, name, lang)
		if f == nil {
			return
		}
		c := &fact.Component{Dir: g.c.Dir}
		up := &gradle{t: g.t, c: c, f: f, plugins: map[string]bool{}, vars: map[string]string{}}
		up.block(f.Body, "")
		g.c.Pins = append(g.c.Pins, c.Pins...)
	}
	for d := g.c.Dir; d != "" && len(g.c.Pins) == 0; {
		d = source.Dir(d)
		for _, n := range gradleFiles {
			if p := survey.Join(d, n); g.t.Has(p) && len(g.c.Pins) == 0 {
				pins(p)
			}
		}
	}
	for _, e := range g.t.Entries {
		if len(g.c.Pins) > 0 {
			return
		}
		if e.OnDisk && (strings.HasPrefix(e.Path, "buildSrc/") || strings.HasPrefix(e.Path, "build-logic/")) && (strings.HasSuffix(e.Path, ".gradle.kts") || strings.HasSuffix(e.Path, ".gradle")) {
			pins(e.Path)
		}
	}
}

func or(a, b string) string {
	if a != "" {
		return a
	}
	return b
}

func (g *gradle) settings(f *code.File) {
	f.Body.Walk(func(n *code.Node) bool {
		if n.Is(code.Assign) && n.Kid(0).Is(code.Member) && n.Kid(0).Name == "name" || n.Is(code.Assign) && n.Kid(0).Is(code.Member) && n.Kids[0].Name == "name" {
			if s, ok := survey.Literal(n.Kid(1)); ok {
				g.name = s
			}
		}
		return true
	})
}

// block goes through the statements of a build script below a path of block
// names.
func (g *gradle) block(n *code.Node, in string) {
	n.Walk(func(k *code.Node) bool {
		if k == n {
			return true
		}
		switch {
		case k.Is(code.ExprStmt) && k.Kid(0).Is(code.Name) && in == "plugins":
			g.plugins[k.Kids[0].Name] = true
			return false
		case k.Is(code.Bind):
			g.set(in, k.Kid(0), k.Kid(1))
			return false
		case k.Is(code.Assign):
			g.set(in, k.Kid(0), k.Kid(1))
			return false
		case k.Is(code.Call):
			g.call(k, in)
			return false
		}
		return true
	})
}

func (g *gradle) call(k *code.Node, in string) {
	name := survey.Callee(k)
	args := k.Args()
	if k.Kid(0).Is(code.Member) && (name == "version" || name == "apply") { // id("x").version("1")
		if inner := k.Kids[0].Kid(0); inner.Is(code.Call) {
			g.call(inner, in)
			return
		}
	}
	if in == "plugins" || strings.HasSuffix(in, ".plugins") {
		switch name {
		case "id":
			if s, ok := survey.Literal(k.Kid(1)); ok {
				g.plugins[s] = true
			}
		case "kotlin":
			g.plugins["org.jetbrains.kotlin."+lit(k.Kid(1))] = true
		case "alias":
			g.plugins[g.alias(k.Kid(1))] = true
		}
		return
	}
	if strings.HasSuffix(in, "dependencies") {
		if dev, ok := configurations[name]; ok {
			for _, a := range args {
				g.dependency(k, a, dev, name)
			}
			if grp := survey.Named(k, "group"); grp != nil {
				g.declare(lit(grp)+":"+lit(survey.Named(k, "name")), lit(survey.Named(k, "version")), dev, name, g.f.At(k))
			}
			return
		}
	}
	switch name {
	case "apply":
		if s, ok := survey.Literal(survey.Named(k, "plugin")); ok {
			g.plugins[s] = true
		}
	case "jvmToolchain":
		if len(args) > 0 && args[0].Is(code.Number) {
			g.c.Pins = append(g.c.Pins, survey.ReadPin("java", "toolchain", args[0].Name, survey.RankManifest, g.f.At(args[0])))
		}
	case "set", "convention":
		if m := k.Kid(0); m.Is(code.Member) && len(args) > 0 {
			g.set(in, m.Kid(0), args[0])
		}
	case "mainClassName", "sourceCompatibility", "targetCompatibility", "version", "archiveFileName", "archiveBaseName", "archivesBaseName", "mainClass":
		if len(args) == 1 {
			g.set(in, &code.Node{Kind: code.Name, Name: name}, args[0])
		}
	}
	for _, a := range args {
		if a.Is(code.Func) {
			g.block(a.Kid(1), strings.Trim(in+"."+name, "."))
		}
	}
	if name == "register" || name == "named" || name == "withType" {
		return
	}
}

func lit(n *code.Node) string { s, _ := survey.Literal(n); return s }

// alias looks a plugin or library of the version catalogue up.
func (g *gradle) alias(n *code.Node) string {
	key := strings.TrimPrefix(n.Dotted(), "libs.")
	if rest, ok := strings.CutPrefix(key, "plugins."); ok {
		for _, p := range g.catalog.Get("plugins").Items() {
			if strings.NewReplacer("-", ".", "_", ".").Replace(p.Key) == rest {
				if p.Kind == document.String {
					id, _, _ := strings.Cut(p.Text, ":")
					return id
				}
				return p.Get("id").Str()
			}
		}
	}
	return key
}

func (g *gradle) dependency(call, a *code.Node, dev bool, config string) {
	switch {
	case a.Is(code.String):
		parts := strings.Split(a.Name, ":")
		if len(parts) < 2 {
			return
		}
		spec := ""
		if len(parts) > 2 {
			spec = strings.SplitN(parts[2], "@", 2)[0]
		}
		g.declare(parts[0]+":"+parts[1], spec, dev, config, survey.Quoted(g.f, a))
	case a.Is(code.Template):
		if len(a.Kids) > 0 && a.Kids[0].Is(code.String) {
			parts := strings.Split(a.Kids[0].Name, ":")
			if len(parts) >= 2 {
				g.declare(parts[0]+":"+parts[1], "$", dev, config, g.f.At(a))
			}
		}
	case a.Is(code.Call) && (survey.Callee(a) == "platform" || survey.Callee(a) == "enforcedPlatform"):
		g.c.HasLock = false
		g.vars["platform"] = "1"
	case a.Is(code.Call) && survey.Callee(a) == "kotlin":
		g.declare("org.jetbrains.kotlin:kotlin-"+lit(a.Kid(1)), "$", dev, config, g.f.At(a))
	case a.Is(code.Member):
		key := strings.TrimPrefix(a.Dotted(), "libs.")
		for _, l := range g.catalog.Get("libraries").Items() {
			if strings.NewReplacer("-", ".", "_", ".").Replace(l.Key) != key {
				continue
			}
			module := l.Get("module").Str()
			if module == "" {
				module = l.Get("group").Str() + ":" + l.Get("name").Str()
			}
			if l.Kind == document.String {
				if parts := strings.Split(l.Text, ":"); len(parts) > 1 {
					module = parts[0] + ":" + parts[1]
				}
			}
			g.declare(module, "$", dev, config, g.f.At(a))
		}
	}
}

func (g *gradle) declare(name, spec string, dev bool, config string, at place.Span) {
	d := survey.Declare(name, "", version.Maven, g.f.Name, at)
	switch {
	case strings.Contains(spec, "+") || strings.HasPrefix(spec, "latest."):
		d.Spec, d.Pinned, d.Known = spec, false, false
	case spec != "" && !strings.Contains(spec, "$"):
		d = survey.Declare(name, spec, version.Maven, g.f.Name, at)
	default:
		d.Pinned = true // a platform, a catalogue or a variable says it
	}
	d.Dev, d.Group = dev, config
	g.c.Dependencies = append(g.c.Dependencies, d)
}

// set takes a setting of the build script.
func (g *gradle) set(in string, target, value *code.Node) {
	if target == nil || value == nil {
		return
	}
	name := target.Name
	text := ""
	switch {
	case value.Is(code.String), value.Is(code.Number):
		text = value.Name
	case value.Is(code.Member): // JavaVersion.VERSION_21
		text = strings.TrimPrefix(value.Name, "VERSION_")
		text = strings.ReplaceAll(strings.TrimPrefix(text, "JVM_"), "_", ".")
	case value.Is(code.Call) && survey.Callee(value) == "of":
		if a := value.Kid(1); a.Is(code.Number) || a.Is(code.String) {
			g.c.Pins = append(g.c.Pins, survey.ReadPin("java", "toolchain", a.Name, survey.RankManifest, g.f.At(a)))
		}
		return
	case value.Is(code.Call) && survey.Callee(value) == "toVersion":
		if a := value.Kid(1); a.Is(code.Number) || a.Is(code.String) {
			text = a.Name
			value = a
		}
	}
	switch name {
	case "sourceCompatibility", "targetCompatibility", "jvmTarget", "release":
		if text != "" && (name != "sourceCompatibility" || g.vars["targetCompatibility"] == "") && g.vars["compatibility"] == "" {
			g.vars["compatibility"] = text
			g.c.Pins = append(g.c.Pins, survey.ReadPin("java", "compiler release", text, survey.RankManifest, survey.Quoted(g.f, value)))
		}
	case "version", "archiveFileName", "archiveBaseName", "archivesBaseName", "mainClass", "mainClassName", "archiveClassifier":
		if text != "" {
			if in == "" || name != "version" {
				g.vars[in+"."+name] = text
				g.vars[name] = text
			}
		}
	}
}

func (g *gradle) artefact(file string) {
	for p := range g.plugins {
		switch {
		case strings.HasPrefix(p, "org.springframework.boot"):
			add(g.c, "Spring Boot")
		case strings.HasPrefix(p, "io.quarkus"):
			add(g.c, "Quarkus")
		case strings.HasPrefix(p, "io.micronaut"):
			add(g.c, "Micronaut")
		case strings.HasPrefix(p, "io.ktor"):
			add(g.c, "Ktor")
		}
	}
	has := func(names ...string) bool {
		for _, n := range names {
			if g.plugins[n] {
				return true
			}
		}
		return false
	}
	base := or(or(g.vars["archivesBaseName"], g.vars["archiveBaseName"]), g.name)
	name := base
	if v := g.vars["version"]; v != "" {
		name += "-" + v
	}
	build := "gradle build"
	if g.t.Has(g.c.Path("gradlew")) || g.t.Has("gradlew") {
		build = "./gradlew build"
	}
	a := fact.Artefact{Kind: "jar", Path: g.c.Path("build/libs/" + name + ".jar"), Detail: "plain", Build: build, At: survey.Line1(file)}
	switch {
	case has("war"):
		a.Kind, a.Path = "war", g.c.Path("build/libs/"+name+".war")
	case has("org.springframework.boot"):
		a.Detail = "fat"
	case has("com.gradleup.shadow", "com.github.johnrengelman.shadow"):
		a.Path, a.Detail = g.c.Path("build/libs/"+name+"-all.jar"), "fat"
	case has("io.ktor.plugin"):
		a.Path, a.Detail = g.c.Path("build/libs/"+g.name+"-all.jar"), "fat"
	case has("io.quarkus"):
		a.Path, a.Detail = g.c.Path("build/quarkus-app/quarkus-run.jar"), "a folder with its libraries beside it"
	case g.f != nil && bytes.Contains(g.f.Src, []byte("Main-Class")):
		a.Detail = "thin, with a main class"
		if bytes.Contains(g.f.Src, []byte("zipTree")) {
			a.Detail = "fat"
		}
	}
	if f := g.vars["archiveFileName"]; f != "" {
		a.Path = g.c.Path("build/libs/" + f)
	}
	g.c.Artefacts = append(g.c.Artefacts, a)
	if has("application", "io.ktor.plugin") {
		g.c.Artefacts = append(g.c.Artefacts, fact.Artefact{Kind: "folder", Path: g.c.Path("build/install/" + g.name), Detail: "a start script and the libraries", Build: strings.Replace(build, "build", "installDist", 1), At: survey.Line1(file)})
	}
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, _ string) survey.Modules {
	return &modules{t: t, c: c}
}

type modules struct {
	t *source.Tree
	c *fact.Component
}

// libraries say which library gives a package that no framework brings along,
// by the group of its coordinates. Source: the libraries' own documentation,
// read 2026-11.
var libraries = []struct{ prefix, group, artefact string }{
	{"lombok.", "org.projectlombok", "org.projectlombok:lombok"}, {"org.jsoup.", "org.jsoup", "org.jsoup:jsoup"}, {"io.jsonwebtoken.", "io.jsonwebtoken", "io.jsonwebtoken:jjwt-api"}, {"org.mapstruct.", "org.mapstruct", "org.mapstruct:mapstruct"},
	{"com.google.gson.", "com.google.code.gson", "com.google.code.gson:gson"}, {"org.apache.commons.lang3.", "org.apache.commons", "org.apache.commons:commons-lang3"}, {"io.javalin.", "io.javalin", "io.javalin:javalin"}, {"spark.", "com.sparkjava", "com.sparkjava:spark-core"},
	{"redis.clients.jedis.", "redis.clients", "redis.clients:jedis"}, {"org.jdbi.", "org.jdbi", "org.jdbi:jdbi3-core"}, {"io.vavr.", "io.vavr", "io.vavr:vavr"}, {"org.modelmapper.", "org.modelmapper", "org.modelmapper:modelmapper"}, {"org.springframework.boot.", "org.springframework.boot", "org.springframework.boot:spring-boot-starter"}, {"io.ktor.server.", "io.ktor", "io.ktor:ktor-server-core"},
}

// quiet are groups whose libraries bring none of these along: where something
// else is declared, it may.
var quiet = []string{"org.springframework", "io.quarkus", "io.micronaut", "io.javalin", "com.sparkjava", "io.ktor", "org.slf4j", "ch.qos.logback", "org.postgresql", "com.mysql", "mysql", "com.h2database", "org.xerial", "org.junit", "org.mockito", "org.projectlombok", "com.google.code.gson", "org.jsoup", "com.zaxxer", "org.flywaydb", "org.jetbrains.kotlin", "jakarta.", "javax.", "org.hibernate", "com.fasterxml.jackson", "org.apache.commons", "redis.clients", "org.mapstruct"}

// Resolve implements survey.Modules: a class of the same package by its name,
// any other by its whole name, below the roots of the sources.
func (m *modules) Resolve(from *code.File, module, _ string) (string, bool) {
	ext := path.Ext(from.Name)
	dirs := []string{source.Dir(from.Name)}
	if strings.Contains(module, ".") {
		dirs = nil
		for _, d := range []string{"src/main/java", "src/main/kotlin", "src", "", "app"} {
			dirs = append(dirs, strings.TrimSuffix(m.c.Path(d), "/"))
		}
		// Where the packages of the file that asks begin.
		if of := packageOf(from); of != "" {
			if base, ok := strings.CutSuffix(source.Dir(from.Name), strings.ReplaceAll(of, ".", "/")); ok {
				dirs = append(dirs, strings.TrimSuffix(base, "/"))
			}
		}
	}
	for _, d := range dirs {
		if p := survey.Join(d, strings.ReplaceAll(module, ".", "/")+ext); m.t.Has(p) {
			return p, true
		}
	}
	return "", false
}

// packageOf is the package that a file declares; empty for none.
func packageOf(f *code.File) string {
	if f.Body == nil {
		return ""
	}
	for _, n := range f.Body.Kids {
		if c := n.Kid(0); n.Is(code.ExprStmt) && c.Is(code.Call) && c.Kid(0).Is(code.Name) && c.Kids[0].Name == "package" && c.Kid(1).Is(code.String) {
			return c.Kids[1].Name
		}
	}
	return ""
}

// Classify implements survey.Modules: only imports of libraries that nothing
// declared could bring along are known to need a declaration.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp), Standard: true}
	for _, l := range libraries {
		if !strings.HasPrefix(imp.Name, l.prefix) {
			continue
		}
		for _, d := range m.c.Dependencies {
			group, _, _ := strings.Cut(d.Name, ":")
			known := false
			for _, q := range quiet {
				known = known || strings.HasPrefix(group, q)
			}
			if !known || strings.HasPrefix(group, l.group) && !d.Dev {
				return []fact.Import{i}
			}
		}
		for _, fw := range m.c.Frameworks { // by a parent or a plugin
			if fw == "Spring Boot" && l.group == "org.springframework.boot" || fw == "Ktor" && l.group == "io.ktor" {
				return []fact.Import{i}
			}
		}
		if len(m.c.Manifests) == 0 || m.t.HasDir(m.c.Path("libs")) || m.t.HasDir("buildSrc") {
			return []fact.Import{i}
		}
		i.Standard, i.Package = false, l.artefact
		return []fact.Import{i}
	}
	return []fact.Import{i}
}

// Sources implements survey.Compiler.
func (r *Runtime) Sources(t *source.Tree, c *fact.Component) []string {
	return survey.SourcesIn(t, c, []string{"src/main/java", "src/main/kotlin"}, ".java", ".kt")
}

// Entry implements survey.Runtime: hosts build the artefact and run it, where
// it holds what it needs.
func (r *Runtime) Entry(_ *source.Tree, c *fact.Component) (string, string, bool) {
	for _, a := range c.Artefacts {
		if a.Kind == "jar" && (a.Detail == "fat" || strings.HasPrefix(a.Detail, "a folder")) {
			return "java " + given(c) + "-jar " + strings.TrimPrefix(strings.TrimPrefix(a.Path, c.Dir), "/"), a.At.File, true
		}
	}
	for _, a := range c.Artefacts {
		if a.Kind == "binary" {
			return strings.TrimPrefix(strings.TrimPrefix(a.Path, c.Dir), "/"), a.At.File, true
		}
		if a.Kind == "folder" {
			rel := strings.TrimPrefix(strings.TrimPrefix(a.Path, c.Dir), "/")
			return rel + "/bin/" + path.Base(rel), a.At.File, true
		}
	}
	return "", "", false
}

// given is how hosts hand the port to frameworks that read it from a property.
func given(c *fact.Component) string {
	for _, fw := range c.Frameworks {
		switch fw {
		case "Spring Boot":
			return "-Dserver.port=${PORT:-8080} "
		case "Quarkus":
			return "-Dquarkus.http.port=${PORT:-8080} "
		}
	}
	return ""
}

// Assumed implements survey.Runtime: the class with the main method, where the
// jar does not hold what it needs.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	for _, a := range c.Artefacts {
		rel := strings.TrimPrefix(strings.TrimPrefix(a.Path, c.Dir), "/")
		if main := mainClass(t, c); a.Detail == "plain" && main != "" {
			classes := "target/classes"
			if strings.HasPrefix(rel, "build/") {
				classes = "build/classes/java/main"
			}
			return "java -cp " + classes + " " + main, true
		}
		return "java -jar " + rel, true
	}
	return "", false
}

// mainClass finds the class with a main method, by its whole name.
func mainClass(t *source.Tree, c *fact.Component) string {
	for _, p := range survey.SourcesIn(t, c, []string{"src/main/java"}, ".java") {
		if !survey.Mentions(t, p, "static void main(") {
			continue
		}
		name := strings.TrimSuffix(strings.TrimPrefix(p, c.Path("src/main/java")+"/"), ".java")
		return strings.ReplaceAll(name, "/", ".")
	}
	return ""
}

// Target implements survey.Targeter: java -jar FILE, where a build of the
// component makes the file or the tree has it.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if f.Known == nil {
		for _, a := range c.Artefacts {
			if p, ok := source.Join(f.Dir, f.Path); ok && a.Kind == "folder" && strings.HasPrefix(p, a.Path+"/") {
				return &fact.Target{Named: f.Path, At: f.At, Kind: command.FileTarget, Built: true, File: p}, "", true
			}
		}
		return nil, "", false
	}
	if f.Known.Name != "java" {
		return nil, "", false
	}
	w, ok, _ := f.Flag("-jar")
	if !ok {
		for _, w := range f.Free() { // a source file, or a class by its whole name
			if p, in := source.Join(f.Dir, w.Text); in && w.Literal() && strings.HasSuffix(w.Text, ".java") {
				tg := &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Module: p, Args: after1(f.Args, w)}
				if t.Has(p) {
					tg.File = p
				}
				return tg, "", true
			}
			for _, dir := range []string{"", "src", "app"} {
				src := survey.Join(f.Dir, path.Join(dir, strings.ReplaceAll(w.Text, ".", "/")+".java"))
				if w.Literal() && t.Has(src) {
					return &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Built: true, File: w.Text, Sourced: src, Args: after1(f.Args, w)}, "", true
				}
			}
			for _, src := range []string{"java/" + strings.ReplaceAll(w.Text, ".", "/") + ".java", "kotlin/" + strings.ReplaceAll(w.Text, ".", "/") + ".kt", "kotlin/" + strings.ReplaceAll(strings.TrimSuffix(w.Text, "Kt"), ".", "/") + ".kt"} {
				src = c.Path("src/main/" + src)
				if w.Literal() && t.Has(src) && (!strings.HasSuffix(src, w.Text[strings.LastIndexByte(w.Text, '.')+1:]+".kt") || !nowhere(t, c, f.Dir, w)) {
					return &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Built: true, File: w.Text, Sourced: src, Args: after1(f.Args, w)}, "", true
				}
			}
		}
	}
	if !ok && len(c.Manifests) == 0 { // sources in a folder of any name, compiled by hand
		for _, w := range f.Free() {
			end, found := "/"+strings.ReplaceAll(w.Text, ".", "/")+".java", ""
			for _, e := range t.Below(f.Dir) {
				if w.Literal() && e.OnDisk && strings.HasSuffix(e.Path, end) {
					if found != "" {
						found = ""
						break
					}
					found = e.Path
				}
			}
			if found != "" {
				return &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Built: true, File: w.Text, Sourced: found, Args: after1(f.Args, w)}, "", true
			}
			break
		}
	}
	if !ok {
		if free := f.Free(); len(free) > 0 && nowhere(t, c, f.Dir, free[0]) {
			return &fact.Target{Named: free[0].Text, Module: free[0].Text, At: free[0].At, Kind: command.FileTarget, Meant: mainClass(t, c)}, "", true
		}
	}
	if !ok || !w.Literal() {
		return nil, "", false
	}
	p, in := source.Join(f.Dir, w.Text)
	if !in {
		p = path.Base(w.Text) // somewhere in an image
	}
	tg := &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, File: p, Module: p, Args: after1(f.Args, w)}
	tg.Built = !t.Has(p)
	if main := mainClass(t, c); main != "" {
		for _, end := range []string{"java/" + strings.ReplaceAll(main, ".", "/") + ".java", "kotlin/" + strings.ReplaceAll(main, ".", "/") + ".kt"} {
			if src := c.Path("src/main/" + end); t.Has(src) {
				tg.Sourced = src
			}
		}
	}
	return tg, "", true
}

// others are the endings of files that may hold classes and are not read for them.
var others = map[string]bool{".scala": true, ".groovy": true, ".clj": true, ".cljc": true, ".jar": true, ".class": true}

// elsewhere reports whether a class may come from another module of the tree, from a
// language or an archive that is not read, or from a name that Kotlin gives it
// (Kotlin 2.2, "Calling Kotlin from Java", @JvmName).
func elsewhere(t *source.Tree, name string) bool {
	for _, e := range t.Below("") {
		end := path.Ext(e.Path)
		base := strings.TrimSuffix(path.Base(e.Path), end)
		if others[end] || end == ".java" && base == name || end == ".kt" && (base+"Kt" == name || survey.Mentions(t, e.Path, "JvmName")) {
			return true
		}
		for _, kind := range []string{"class ", "object ", "interface "} { // in a file of any name
			if end == ".kt" && survey.Mentions(t, e.Path, kind+name) {
				return true
			}
		}
	}
	return false
}

// nowhere reports whether a class is not there: its package is one of the tree, and no
// source of it declares the class.
func nowhere(t *source.Tree, c *fact.Component, from string, w command.Word) bool {
	if !w.Literal() || strings.ContainsAny(w.Text, "/$*:@ ") || strings.HasPrefix(w.Text, "-") {
		return false
	}
	folder, name := strings.ReplaceAll(w.Text, ".", "/"), w.Text
	if i := strings.LastIndexByte(w.Text, '.'); i >= 0 {
		folder, name = folder[:i], w.Text[i+1:]
	} else {
		folder = ""
	}
	if name == "" || name[0] < 'A' || name[0] > 'Z' || elsewhere(t, name) {
		return false
	}
	known := false
	for _, dir := range []string{survey.Join(from, ""), survey.Join(from, "src"), survey.Join(from, "app"), c.Path("src/main/java"), c.Path("src/main/kotlin")} {
		for _, e := range t.In(survey.Join(dir, folder)) {
			if !strings.HasSuffix(e.Path, ".java") && !strings.HasSuffix(e.Path, ".kt") {
				continue
			}
			known = true
			for _, kind := range []string{"class ", "record ", "enum ", "interface ", "object "} {
				if survey.Mentions(t, e.Path, kind+name) {
					return false
				}
			}
		}
	}
	return known
}

// after1 are the arguments that follow a word: those of the program.
func after1(args []command.Word, w command.Word) []command.Word {
	for i, a := range args {
		if a.At == w.At {
			return args[i+1:]
		}
	}
	return nil
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(string) string { return "" }
