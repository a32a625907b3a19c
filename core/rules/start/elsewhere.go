package start

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey"
)

// asides are programs of a build script that make nothing which is started.
var asides = map[string]bool{"rm": true, "rimraf": true, "del-cli": true, "echo": true, "mkdir": true, "eslint": true, "prettier": true, "vitest": true, "jest": true}

// elsewhere finds a start from a folder that the compiler of TypeScript does not
// write to, where it is all that the build script runs (TypeScript 5.9, "TSConfig
// Reference", outDir, noEmit; "tsc CLI Options").
func elsewhere(p *rules.Pass, on *rules.On) (rules.Finding, bool) {
	var none rules.Finding
	s := on.Start
	if s == nil || p.Component.Runtime != "node" || s.Final.Missing != nil || !on.Host.RunsBuildScript || len(s.Final.Before) > 0 {
		return none, false
	}
	for _, n := range []string{"prebuild", "postbuild", "postinstall", "prepare", "prestart"} { // which may move it
		if p.Component.Scripts[n].Text != "" {
			return none, false
		}
	}
	build, ok := p.Component.Scripts["build"]
	made, src, _ := output(p, s)
	if !ok || !made || src == "" || s.Target == nil || s.Target.At.Line == 0 {
		return none, false
	}
	out, at, ok := writes(p, build)
	if !ok {
		return none, false
	}
	file := s.Target.File
	if file == "" {
		file, _ = source.Join(s.Final.Dir, s.Target.Named)
	}
	rel := strings.TrimPrefix(strings.TrimPrefix(file, p.Component.Dir), "/")
	if out == "" || rel == out || strings.HasPrefix(rel, out+"/") {
		return none, false
	}
	top, rest, _ := strings.Cut(rel, "/")
	return rules.Finding{
		Where: s.Target.At, Remedy: fmt.Sprintf("%s/%s, or \"outDir\": %q", out, rest, top),
		Message: fmt.Sprintf("starts %s, and the build writes to %s: there is no %s on the host", s.Target.Named, out, top),
		Trail:   append(s.Final.Steps[:len(s.Final.Steps):len(s.Final.Steps)], rules.Step(build.At, "builds with "+build.Text), rules.Step(at, "writes to "+out)),
	}, true
}

// writes is the folder that a build script compiles to, seen from that of the
// component, and where that is said; ok is false where it does more, or less is told.
func writes(p *rules.Pass, build command.Script) (out string, at place.Span, ok bool) {
	line, err := command.Parse(build.Text, build.At)
	if err != nil {
		return "", at, false
	}
	project, found := "tsconfig.json", false
	for _, c := range line.Commands {
		words := c.Words
		if len(words) > 0 && words[0].Text == "npx" {
			words = words[1:]
		}
		switch {
		case len(words) == 0 || asides[command.Base(words[0].Text)]:
			continue
		case words[0].Text != "tsc" || found || len(c.Env) > 0:
			return "", at, false
		}
		found = true
		for i := 1; i < len(words); i++ {
			w := words[i]
			next := i+1 < len(words)
			switch {
			case !w.Literal(), w.Text == "-b", w.Text == "--build", w.Text == "--outFile", w.Text == "--noEmit", w.Text == "--rootDir":
				return "", at, false
			case (w.Text == "-p" || w.Text == "--project") && next:
				i++
				project = words[i].Text
			case w.Text == "--outDir" && next:
				i++
				out, at = path.Clean(words[i].Text), words[i].At
			}
		}
	}
	if !found {
		return "", at, false
	}
	if out != "" {
		return out, at, !strings.HasPrefix(out, ".")
	}
	if path.Ext(project) != ".json" {
		project = path.Join(project, "tsconfig.json")
	}
	cfg := survey.Join(p.Component.Dir, path.Clean(project))
	if !p.Tree.Has(cfg) {
		return "", at, false
	}
	f, err := p.Tree.Document(cfg)
	if err != nil {
		return "", at, false
	}
	d, err := document.JSON(cfg, f.Data, f.Lines(), true)
	if err != nil {
		return "", at, false
	}
	dir := d.Get("compilerOptions", "outDir")
	if dir.Str() == "" || d.Get("compilerOptions", "outFile") != nil || d.Get("references") != nil || d.Get("compilerOptions", "noEmit") != nil {
		return "", at, false
	}
	out = path.Join(path.Dir(path.Clean(project)), dir.Str())
	return out, dir.At(), out != "." && !strings.HasPrefix(out, "..") && !strings.Contains(out, "$")
}
