package start

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

var artefact = &rules.Rule{
	ID: "start/artefact", Level: rules.Blocker, Title: "what the build makes cannot be started this way", Doc: doc("artefact"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil || on.Start.Final.Reason != "" {
				continue
			}
			if why, remedy, at := unfit(p.Component, on.Start); why != "" {
				t := rules.Finding{Where: on.Start.Final.At, Trail: on.Start.Final.Steps, Message: why, Remedy: remedy}
				if on.Start.Target != nil && on.Start.Target.At.Line > 0 {
					t.Where = on.Start.Target.At
				}
				if at.At.File != "" {
					t.Trail = append(t.Trail[:len(t.Trail):len(t.Trail)], rules.Step(at.At, "makes "+at.Path+", "+at.Detail))
				}
				p.Report(on, 0, t)
			}
		}
	},
}

// unfit says why an artefact cannot be started as the command does.
func unfit(c *fact.Component, s *fact.Start) (why, remedy string, a fact.Artefact) {
	f := s.Final
	switch f.Program {
	case "java":
		jar, ok, _ := f.Flag("-jar")
		if !ok || !jar.Literal() {
			return "", "", a
		}
		if strings.HasSuffix(jar.Text, "-sources.jar") || strings.HasSuffix(jar.Text, "-javadoc.jar") {
			return jar.Text + " holds no program", "the jar without " + path.Base(jar.Text)[strings.LastIndexByte(path.Base(jar.Text), '-'):], a
		}
		for _, a := range c.Artefacts {
			if a.Kind == "jar" && made(path.Base(jar.Text), path.Base(a.Path)) {
				return jarUnfit(c, jar.Text, a)
			}
		}
		// A jar that only lacks its libraries stands beside a fat one.
		for _, a := range c.Artefacts {
			stem := strings.TrimSuffix(path.Base(a.Path), ".jar")
			own := strings.TrimSuffix(path.Base(jar.Text), ".jar")
			beside := strings.HasPrefix(own, stem+"-plain") || stem == own+"-jar-with-dependencies" || stem == own+"-all" || stem == own+"-runner"
			if a.Kind == "jar" && a.Detail == "fat" && beside {
				return fmt.Sprintf("%s holds the project's own classes only; the jar that holds everything is %s", jar.Text, path.Base(a.Path)), path.Join(path.Dir(jar.Text), path.Base(a.Path)), a
			}
		}
	case "dotnet":
		if free := f.Free(); len(free) > 0 && strings.HasSuffix(free[0].Text, ".dll") {
			for _, a := range c.Artefacts {
				if a.Kind == "assembly" && path.Base(a.Path) == path.Base(free[0].Text) && strings.Contains(a.Detail, "library") {
					return free[0].Text + " is a library, which has no entry point", "<OutputType>Exe</OutputType>", a
				}
			}
		}
	}
	return "", "", a
}

// made compares the name of a file with that of an artefact, which may hold a
// star for a version that is not known.
func made(name, artefact string) bool {
	ok, err := path.Match(artefact, name)
	if err == nil && ok {
		return true
	}
	ok, err = path.Match(name, artefact) // target/*.jar
	return err == nil && ok
}

func jarUnfit(c *fact.Component, jar string, a fact.Artefact) (why, remedy string, at fact.Artefact) {
	switch {
	case a.Detail == "plain":
		return fmt.Sprintf("%s holds the project's own classes only, and its manifest names no main class: java -jar ends with \"no main manifest attribute\"", jar), "let the build make a jar that holds everything and names its main class", a
	case strings.HasPrefix(a.Detail, "thin") && runDependencies(c) > 0:
		return fmt.Sprintf("%s names its main class and holds none of the %d libraries that it needs: the first use of one ends the program", jar, runDependencies(c)), "let the build make a jar that holds everything, or put the libraries beside it", a
	}
	return "", "", a
}

func runDependencies(c *fact.Component) int {
	n := 0
	for _, d := range c.Dependencies {
		if !d.Dev {
			n++
		}
	}
	return n
}
