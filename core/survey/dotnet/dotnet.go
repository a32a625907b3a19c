// Package dotnet surveys .NET components: project files, solutions,
// global.json, central package versions (documentation of MSBuild and NuGet,
// read 2026-11).
package dotnet

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/version"
)

// Runtime is the survey of .NET.
type Runtime struct{ locks *lock.Reader }

// New makes the survey of .NET for one tree.
func New(locks *lock.Reader) *Runtime { return &Runtime{locks} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "dotnet" }

// project finds the project file of a folder.
func project(f survey.Folder) string {
	best := ""
	for n := range f.Names {
		switch path.Ext(n) {
		case ".csproj", ".fsproj", ".vbproj":
			if best == "" || n < best {
				best = n
			}
		}
	}
	return best
}

// Claims implements survey.Runtime.
func (r *Runtime) Claims(t *source.Tree, f survey.Folder) int {
	n := project(f)
	if n == "" {
		return 0
	}
	d, broken := survey.Document(t, survey.Join(f.Dir, n))
	if broken {
		return 2
	}
	p := d.Get("Project")
	sdk := p.Get("@Sdk").Str()
	test := false
	for _, g := range p.All("ItemGroup") {
		for _, x := range g.All("PackageReference") {
			test = test || x.Get("@Include").Str() == "Microsoft.NET.Test.Sdk"
		}
	}
	switch {
	case test:
		return 1
	case sdk == "Microsoft.NET.Sdk.Web", sdk == "Microsoft.NET.Sdk.Worker", strings.EqualFold(property(p, "OutputType").Str(), "Exe"):
		return 2
	}
	return 1
}

// property finds a property in the property groups; the last counts.
func property(p *document.Node, name string) *document.Node {
	var found *document.Node
	for _, g := range p.All("PropertyGroup") {
		if x := g.Get(name); x != nil {
			found = x
		}
	}
	return found
}

var frameworks = [][2]string{{"Microsoft.AspNetCore.OpenApi", "ASP.NET Core"}, {"Swashbuckle.AspNetCore", "ASP.NET Core"}, {"Carter", "Carter"}, {"FastEndpoints", "FastEndpoints"}, {"Giraffe", "Giraffe"}, {"EmbedIO", "EmbedIO"}}

// Gather implements survey.Runtime.
func (r *Runtime) Gather(t *source.Tree, c *fact.Component, f survey.Folder) {
	c.Complete = true
	file := c.Path(project(f))
	d, broken := survey.Document(t, file)
	if broken {
		c.Complete, c.Broken = false, true
	}
	p := d.Get("Project")
	c.Manifests = append(c.Manifests, &fact.Manifest{File: file, Manager: "nuget"})
	if sdk := p.Get("@Sdk").Str(); sdk == "Microsoft.NET.Sdk.Web" {
		c.Frameworks = append(c.Frameworks, "ASP.NET Core")
	} else if sdk == "Microsoft.NET.Sdk.Worker" {
		c.Frameworks = append(c.Frameworks, "Worker")
	}
	// What the folders above say counts where the project says nothing.
	var props, packages *document.Node
	for dir := c.Dir; ; dir = source.Dir(dir) {
		if props == nil {
			if x, _ := survey.Document(t, survey.Join(dir, "Directory.Build.props")); x != nil {
				props = x.Get("Project")
			}
		}
		if packages == nil {
			if x, _ := survey.Document(t, survey.Join(dir, "Directory.Packages.props")); x != nil {
				packages = x.Get("Project")
			}
		}
		if g := survey.Join(dir, "global.json"); t.Has(g) && len(c.Pins) == 0 {
			if x, _ := survey.Document(t, g); x != nil {
				if v := x.Get("sdk", "version"); v.Str() != "" {
					pin := survey.ReadPin("dotnet", "global.json", v.Text, survey.RankFile, survey.Inside(v.At()))
					if pin.Known { // an SDK builds for its own and for earlier runtimes
						if e, ok := pin.Set.End(); ok {
							pin.Set = version.Below(e)
							pin.Lower = true
						}
					}
					if roll := x.Get("sdk", "rollForward").Str(); strings.Contains(strings.ToLower(roll), "major") {
						pin.Known = false
					}
					c.Pins = append(c.Pins, pin)
				}
			}
		}
		if dir == "" {
			break
		}
	}
	tfm := property(p, "TargetFramework")
	if tfm == nil {
		tfm = property(p, "TargetFrameworks")
	}
	if tfm == nil {
		tfm = property(props, "TargetFramework")
	}
	if tfm.Str() != "" && !strings.Contains(tfm.Text, "$") {
		text := tfm.Text
		if i := strings.LastIndexByte(text, ';'); i >= 0 {
			text = text[i+1:]
		}
		pin := survey.ReadPin("dotnet", "TargetFramework", text, survey.RankManifest, tfm.At())
		c.Pins = append(c.Pins, pin)
	}
	central := map[string]*document.Node{}
	for _, g := range packages.All("ItemGroup") {
		for _, x := range g.All("PackageVersion") {
			central[strings.ToLower(x.Get("@Include").Str())] = x.Get("@Version")
		}
	}
	for _, g := range p.All("ItemGroup") {
		for _, x := range g.All("PackageReference") {
			name := x.Get("@Include")
			if name.Str() == "" {
				continue
			}
			v := x.Get("@Version")
			if v == nil {
				v = x.Get("Version")
			}
			if v == nil {
				v = central[strings.ToLower(name.Text)]
			}
			dep := survey.Declare(strings.ToLower(name.Text), "", version.NuGet, file, name.At())
			if v.Str() != "" && !strings.Contains(v.Text, "$") {
				dep = survey.Declare(strings.ToLower(name.Text), v.Text, version.NuGet, file, name.At())
				dep.Pinned = !strings.Contains(v.Text, "*") // the lowest version that fits is taken
				dep.Exact = dep.Pinned
			} else if v != nil {
				dep.Pinned = true
			}
			c.Dependencies = append(c.Dependencies, dep)
			if fw := survey.Of(frameworks, name.Text); fw != "" && len(c.Frameworks) == 0 {
				c.Frameworks = append(c.Frameworks, fw)
			}
		}
		for _, x := range g.All("ProjectReference") {
			ref := strings.ReplaceAll(x.Get("@Include").Str(), `\`, "/")
			if _, in := source.Join(c.Dir, ref); !in && ref != "" {
				c.Outside = append(c.Outside, fact.Path{Text: ref, At: x.Get("@Include").At()})
			}
		}
	}
	survey.TakeLocks(t, c, r.locks, false, "nuget")
	c.Pins = append(c.Pins, survey.FilePins(t, c.Dir, "dotnet")...)
	name := strings.TrimSuffix(path.Base(file), path.Ext(file))
	at := survey.Line1(file)
	if a := property(p, "AssemblyName"); a.Str() != "" && !strings.Contains(a.Text, "$") {
		name, at = a.Text, a.At()
	}
	detail := "needs the runtime"
	if strings.EqualFold(property(p, "SelfContained").Str(), "true") {
		detail = "self-contained"
	}
	if strings.EqualFold(property(p, "PublishAot").Str(), "true") {
		detail = "a native program"
	}
	// Without the Web or Worker SDK the output is a library unless something
	// says otherwise (MSBuild properties for .NET SDK projects, OutputType).
	if out := property(p, "OutputType").Str(); strings.EqualFold(out, "Library") || out == "" && strings.EqualFold(p.Get("@Sdk").Str(), "Microsoft.NET.Sdk") {
		detail = "a library"
	}
	c.Artefacts = append(c.Artefacts, fact.Artefact{Kind: "assembly", Path: name + ".dll", Detail: detail, Build: "dotnet publish -c Release", At: at})
}

// Modules implements survey.Runtime.
func (r *Runtime) Modules(t *source.Tree, c *fact.Component, _ string) survey.Modules {
	return &modules{t: t, c: c}
}

type modules struct {
	t *source.Tree
	c *fact.Component
}

// libraries say which package gives a namespace, with the word by which other
// packages that bring it are known. Source: the packages' own pages, 2026-11.
var libraries = []struct{ space, pkg, word string }{
	{"Newtonsoft.Json", "Newtonsoft.Json", "newtonsoft"}, {"Serilog", "Serilog", "serilog"}, {"Dapper", "Dapper", "dapper"}, {"Npgsql", "Npgsql", "npgsql"}, {"MediatR", "MediatR", "mediatr"}, {"FluentValidation", "FluentValidation", "fluentvalidation"}, {"AutoMapper", "AutoMapper", "automapper"},
	{"StackExchange.Redis", "StackExchange.Redis", "redis"}, {"MongoDB.Driver", "MongoDB.Driver", "mongo"}, {"Polly", "Polly", "polly"}, {"MySqlConnector", "MySqlConnector", "mysql"}, {"Quartz", "Quartz", "quartz"}, {"Microsoft.EntityFrameworkCore", "Microsoft.EntityFrameworkCore", "entityframeworkcore"}, {"Carter", "Carter", "carter"},
}

// Resolve implements survey.Modules.
func (*modules) Resolve(*code.File, string, string) (string, bool) { return "", false }

// Classify implements survey.Modules. A project that refers to others may get
// packages through them.
func (m *modules) Classify(from *code.File, imp *code.Node) []fact.Import {
	i := fact.Import{Module: imp.Name, From: from.Name, At: from.At(imp), Standard: true}
	for _, l := range libraries {
		if imp.Name != l.space && !strings.HasPrefix(imp.Name, l.space+".") {
			continue
		}
		for _, d := range m.c.Dependencies {
			if strings.Contains(d.Name, l.word) {
				return []fact.Import{i}
			}
		}
		if f, err := m.t.Code(m.c.Manifests[0].File); err != nil || strings.Contains(string(f.Data), "ProjectReference") || strings.Contains(string(f.Data), "<Import") {
			return []fact.Import{i}
		}
		for dir := m.c.Dir; ; dir = source.Dir(dir) {
			if m.t.Has(survey.Join(dir, "Directory.Build.props")) || m.t.Has(survey.Join(dir, "Directory.Build.targets")) {
				return []fact.Import{i}
			}
			if dir == "" {
				break
			}
		}
		i.Standard, i.Package = false, strings.ToLower(l.pkg)
		return []fact.Import{i}
	}
	return []fact.Import{i}
}

// Sources implements survey.Compiler: every source below the project that does
// not belong to another.
func (r *Runtime) Sources(t *source.Tree, c *fact.Component) []string {
	var list []string
	inner := map[string]bool{}
	for _, e := range t.Below(c.Dir) {
		if strings.HasSuffix(e.Path, ".csproj") && source.Dir(e.Path) != c.Dir {
			inner[source.Dir(e.Path)] = true
		}
	}
	for _, p := range survey.SourcesIn(t, c, []string{""}, ".cs") {
		mine := true
		for d := source.Dir(p); d != c.Dir && d != ""; d = source.Dir(d) {
			base := path.Base(d)
			mine = mine && !inner[d] && base != "obj" && base != "bin"
		}
		if mine {
			list = append(list, p)
		}
	}
	return list
}

// Target implements survey.Targeter: dotnet FILE.dll and dotnet run.
func (r *Runtime) Target(t *source.Tree, c *fact.Component, f command.Final) (*fact.Target, string, bool) {
	if f.Known == nil || f.Known.Name != "dotnet" {
		return nil, "", false
	}
	for _, w := range f.Free() {
		if w.Literal() && strings.HasSuffix(w.Text, ".dll") {
			return &fact.Target{Named: w.Text, At: w.At, Kind: command.FileTarget, Built: true, File: survey.Join(f.Dir, path.Base(w.Text))}, "", true
		}
	}
	return nil, "", false
}

// Entry implements survey.Runtime: hosts publish the project and run its
// assembly.
func (r *Runtime) Entry(_ *source.Tree, c *fact.Component) (string, string, bool) {
	for _, a := range c.Artefacts {
		return "dotnet " + a.Path, a.At.File, true
	}
	return "", "", false
}

// Assumed implements survey.Runtime.
func (r *Runtime) Assumed(t *source.Tree, c *fact.Component) (string, bool) {
	cmd, _, ok := r.Entry(t, c)
	return cmd, ok
}

// Framework implements survey.Runtime.
func (*Runtime) Framework(string) string { return "" }
