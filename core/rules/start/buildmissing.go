package start

import (
	"fmt"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey"
)

var buildMissing = &rules.Rule{
	ID: "start/build-missing", Level: rules.Blocker, Title: "starts from build output that no step makes", Doc: doc("build-missing"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if f, ok := unbuilt(p, on); ok {
				p.Report(on, 0, f)
			} else if f, ok := elsewhere(p, on); ok {
				p.Report(on, 0, f)
			}
		}
	},
}

// unbuilt finds a start from what a build would make, where nothing on this
// host builds.
func unbuilt(p *rules.Pass, on *rules.On) (rules.Finding, bool) {
	s := on.Start
	if s == nil || p.Component.Runtime != "node" || s.Final.Missing != nil {
		return rules.Finding{}, false
	}
	made, src, folder := output(p, s)
	if !made || builds(p.Component, on) {
		return rules.Finding{}, false
	}
	at := s.Final.At
	what := s.Final.Program + " starts what its build makes"
	if s.Target != nil && s.Target.At.Line > 0 {
		at, what = s.Target.At, "starts "+s.Target.Named
	}
	f := rules.Finding{Where: at, Trail: s.Final.Steps}
	step := "no build step is run on this host"
	if on.Host.RunsBuildScript {
		step = "there is no script named build"
		for _, n := range []string{"compile", "tsc", "bundle", "prod", "build:prod", "dist", "transpile"} {
			if sc, ok := p.Component.Scripts[n]; ok {
				step += fmt.Sprintf("; the script %s is not run by hosts", n)
				f.Trail = append(f.Trail[:len(f.Trail):len(f.Trail)], rules.Step(sc.At, "builds, under another name"))
				f.Remedy = fmt.Sprintf(`"build": %q`, sc.Text)
				break
			}
		}
	} else if on.Start.Source == "container" {
		step = "no step of " + on.Start.File + " builds it"
		f.Remedy = "RUN npm run build"
	}
	f.Message = fmt.Sprintf("%s, which is made by a build: %s", what, step)
	if src != "" {
		f.Message = fmt.Sprintf("%s, which is made from %s: %s", what, src, step)
	}
	if f.Remedy == "" {
		f.Remedy = `"build": "tsc"`
		if s.Final.Known != nil && s.Final.Known.Name == "next" {
			f.Remedy = `"build": "next build"`
		} else if !strings.HasSuffix(src, "ts") && !strings.HasSuffix(src, "tsx") {
			f.Remedy = "a script named build that makes " + folder
		}
	}
	return f, true
}

// output tells a start from the output of a build that is not in the tree,
// with the source it is made from and its folder.
func output(p *rules.Pass, s *fact.Start) (made bool, src, folder string) {
	if k := s.Final.Known; k != nil && k.Name == "next" && len(s.Final.Free()) > 0 && s.Final.Free()[0].Text == "start" {
		dir := source.Dir(survey.Join(s.Final.Dir, ".next/x"))
		return p.Tree.State(survey.Join(dir, "BUILD_ID")) != source.Shipped, "", dir
	}
	t := s.Target
	if t == nil || t.Kind != command.FileTarget && t.Kind != command.FolderTarget {
		return false, "", ""
	}
	file := t.File
	if file == "" {
		var ok bool
		if file, ok = source.Join(s.Final.Dir, t.Named); !ok {
			return false, "", ""
		}
	} else if !t.Built {
		return false, "", ""
	}
	if p.Tree.HasDir(file) {
		return false, "", ""
	}
	rel := strings.TrimPrefix(strings.TrimPrefix(file, p.Component.Dir), "/")
	folder, _, _ = strings.Cut(rel, "/")
	if t.Sourced != "" {
		return true, t.Sourced, folder
	}
	src, ok := survey.CompiledFrom(p.Tree, p.Component, file)
	if plain := strings.HasSuffix(src, "js"); plain && !compiles(p.Component) { // the same language: nothing makes one of the other
		ok, src = false, ""
	}
	return t.Built || ok, src, folder
}

// compiles reports whether a package has anything that makes other files of its own.
func compiles(c *fact.Component) bool {
	for name, s := range c.Scripts {
		if building(name + " " + s.Text) {
			return true
		}
	}
	for _, d := range c.Dependencies {
		if building(strings.TrimPrefix(d.Name, "@")) || d.Name == "typescript" {
			return true
		}
	}
	return false
}

// builds reports whether a host runs a step that builds.
func builds(c *fact.Component, on *rules.On) bool {
	for _, f := range on.Start.Final.Before {
		if building(f.Program + " " + words(f)) {
			return true
		}
	}
	install := ""
	for _, n := range []string{"preinstall", "install", "postinstall", "prepare", "prestart"} {
		install += c.Scripts[n].Text + " "
	}
	if on.Host.RunsBuildScript {
		if _, ok := c.Scripts["build"]; ok {
			return true
		}
	}
	if on.Start.Descriptor != nil && on.Start.Descriptor.Image != nil {
		im := on.Start.Descriptor.Image
		for _, r := range im.Runs {
			if building(r.Text) || building(install) && strings.Contains(r.Text, "install") || building(install) && strings.Contains(r.Text, " ci") {
				return true
			}
		}
		for _, x := range im.Copies {
			if x.FromStage != "" {
				return true // from an image that cannot be looked into
			}
		}
		return false
	}
	return building(install)
}

func words(f command.Final) string {
	var b strings.Builder
	for _, a := range f.Args {
		b.WriteString(a.Text + " ")
	}
	return b.String()
}

// building tells the text of a step that may build: what is wrong here would
// be a false alarm, so that much counts.
func building(text string) bool {
	for _, w := range []string{"build", "tsc", "webpack", "esbuild", "rollup", "swc", "babel", "compile", "make", "gulp", "grunt", "tsup", "ncc", "parcel", "turbo", "bundle", "vite", "nuxt", "generate", "dist"} {
		if strings.Contains(text, w) {
			return true
		}
	}
	return false
}
