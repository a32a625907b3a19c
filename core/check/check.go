// Package check is the conductor: from a folder to components, their facts,
// the findings on each host, and a verdict for each component and host.
package check

import (
	"fmt"
	"path"
	"runtime"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"
	"time"

	"ubique/core/command"
	"ubique/core/descriptor/container"
	"ubique/core/descriptor/process"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/host"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/rules/catalog"
	"ubique/core/source"
	"ubique/core/survey"
	bare "ubique/core/survey/container"
	"ubique/core/survey/deno"
	"ubique/core/survey/dotnet"
	"ubique/core/survey/elixir"
	"ubique/core/survey/golang"
	"ubique/core/survey/java"
	"ubique/core/survey/node"
	"ubique/core/survey/php"
	"ubique/core/survey/python"
	"ubique/core/survey/ruby"
	"ubique/core/survey/rust"
	"ubique/core/survey/static"
	"ubique/core/value"
	"ubique/core/version"
)

// Options say what to look at.
type Options struct {
	Dir   string
	Hosts []*host.Contract  // all that are known
	On    []string          // the names of those that matter; none: all
	With  map[string]string // an environment to evaluate listeners under; nil: none
	Rules bool              // look for findings; a survey needs none
	Deal  []Accept          // findings that are accepted
	Today string            // the day on which support is judged, YYYY-MM-DD; empty: today
}

// Accept is a finding that somebody accepted, with the reason.
type Accept struct {
	Rule, File, Reason string
	Until              string // the last day, YYYY-MM-DD; empty: no end
}

// Verdict is what is to be expected of a component on a host.
type Verdict struct {
	Component, Host string
	Verdict         string // ready, at risk, blocked, unknown, not applicable
	Rules           []string
	Reason          string
}

// Unknown is a question that could not be answered.
type Unknown struct {
	Component, Question, Reason string
	At                          place.Span
}

// Report is all that a run found out.
type Report struct {
	Root       string
	Route      source.Route
	Shipped    int
	LeftOut    int
	Skipped    []string
	Problems   []source.Problem
	Components []*fact.Component
	Hosts      []*host.Contract
	Findings   []rules.Finding
	Lines      map[place.Span]string // the source line of each finding
	Verdicts   []Verdict
	Unknown    []Unknown
	Accepted   int
	With       map[string]string
}

// Worst is the worst level among the findings, 0 when there are none.
func (r *Report) Worst() rules.Level {
	var w rules.Level
	for _, f := range r.Findings {
		w = max(w, f.Level)
	}
	return w
}

// probePort stands for the port that a host gives, where it is new at each
// boot. No program is likely to have it as its own number.
const probePort = 51423

type conductor struct {
	opts     Options
	t        *source.Tree
	runtimes []survey.Runtime
	folders  map[string]survey.Folder
	hosts    []*host.Contract
	report   *Report
	mu       sync.Mutex
	broken   []rules.Broken
	on       map[string][]*rules.On
	loose    []*fact.Descriptor
	node     *node.Runtime

	ci        sync.Once
	workflows []survey.Workflow
}

// Run looks at a tree. The error says what could not be read at all; all else
// is in the report.
func Run(opts Options) (*Report, error) {
	if opts.Today == "" {
		opts.Today = time.Now().Format(time.DateOnly)
	}
	t, err := source.Open(opts.Dir)
	if err != nil {
		return nil, err
	}
	defer t.Close()
	c := &conductor{opts: opts, t: t, folders: map[string]survey.Folder{}, on: map[string][]*rules.On{}}
	locks := lock.NewReader(t)
	c.node = node.New(locks)
	c.runtimes = []survey.Runtime{c.node, python.New(locks), deno.New(locks), ruby.New(locks), java.New(locks), golang.New(locks), php.New(locks), dotnet.New(locks), rust.New(locks), elixir.New(locks), static.New(), bare.New()}
	for _, h := range opts.Hosts {
		if len(opts.On) == 0 || slices.Contains(opts.On, h.Name) {
			c.hosts = append(c.hosts, h)
		}
	}
	r := &Report{Root: opts.Dir, Route: t.Route, Shipped: t.Shipped, LeftOut: t.LeftOut, Skipped: t.Skipped, Hosts: c.hosts, Lines: map[place.Span]string{}, With: opts.With}
	c.report = r
	for _, f := range survey.Folders(t) {
		c.folders[f.Dir] = f
	}
	r.Components = survey.Find(t, c.runtimes)
	c.descriptors()
	c.components()
	if opts.Rules {
		found := rules.RunTree(catalog.All(), rules.TreePass{Tree: t, Components: r.Components, On: c.on, Broken: c.broken, NearMisses: c.nearMisses(), Rooted: t.Sub})
		c.keep(found)
		c.finish()
	} else {
		r.Verdicts = nil // a survey judges nothing
	}
	r.Problems = t.Problems()
	for _, p := range r.Problems {
		r.Unknown = append(r.Unknown, Unknown{Component: ".", Question: "what is in it", Reason: p.Reason, At: place.Whole(p.Path)})
	}
	sort.SliceStable(r.Unknown, func(i, j int) bool {
		a, b := r.Unknown[i], r.Unknown[j]
		if a.Component != b.Component {
			return a.Component < b.Component
		}
		if a.At != b.At {
			return a.At.Before(b.At)
		}
		return a.Question+a.Reason < b.Question+b.Reason
	})
	return r, nil
}

// descriptors reads the descriptors of every folder and gives each to the
// component it is for.
func (c *conductor) descriptors() {
	dirs := make([]string, 0, len(c.folders))
	for d := range c.folders {
		dirs = append(dirs, d)
	}
	sort.Strings(dirs)
	byDir := map[string]*fact.Component{}
	for _, comp := range c.report.Components {
		if byDir[comp.Dir] == nil {
			byDir[comp.Dir] = comp
		}
	}
	for _, dir := range dirs {
		f := c.folders[dir]
		read := func(name string, parse func(string, *source.File) *fact.Descriptor, route string) {
			if !f.Has(name) {
				return
			}
			p := path.Join(dir, name)
			file, err := c.t.Code(p)
			if err != nil {
				return
			}
			d := parse(p, file)
			if d.Err != nil {
				c.broken = append(c.broken, rules.Broken{Err: d.Err, Route: route})
			}
			if d.Image != nil {
				d.Image.Context = c.context(dir, d.Image)
			}
			if comp := c.owner(dir, byDir, d); comp != nil {
				comp.Descriptors = append(comp.Descriptors, d)
			} else if d.Format == "container file" {
				// Nothing else is read here: the container file is the component.
				comp := &fact.Component{ID: dir, Dir: dir, Runtime: "container", Descriptors: []*fact.Descriptor{d}}
				if dir == "" {
					comp.ID = "."
				}
				byDir[dir] = comp
				c.report.Components = append(c.report.Components, comp)
				sort.SliceStable(c.report.Components, func(i, j int) bool { return c.report.Components[i].Dir < c.report.Components[j].Dir })
			} else {
				c.loose = append(c.loose, d)
			}
		}
		read(process.FileName, process.Read, "git")
		for _, n := range []string{"Dockerfile", "Containerfile"} {
			read(n, container.Read, "image")
		}
		for _, n := range []string{"compose.yaml", "compose.yml", "docker-compose.yml", "docker-compose.yaml"} {
			read(n, readYAML("compose file"), "")
		}
		for _, n := range []string{"package.json", "Pipfile", "pyproject.toml", "composer.json", "Cargo.toml", "pom.xml", "deno.json", "deno.jsonc", "global.json", "angular.json"} {
			if f.Has(n) {
				c.readable(path.Join(dir, n))
			}
		}
	}
}

// readYAML notes a descriptor whose format is read by a later step, and
// whether it can be read at all.
func readYAML(format string) func(string, *source.File) *fact.Descriptor {
	return func(name string, f *source.File) *fact.Descriptor {
		d := &fact.Descriptor{File: name, Format: format, How: "read"}
		if _, err := document.YAML(name, f.Data, f.Lines()); err != nil {
			d.Err, _ = document.AsError(err)
		}
		return d
	}
}

func (c *conductor) readable(p string) {
	f, err := c.t.Document(p)
	if err != nil {
		return
	}
	switch path.Ext(p) {
	case ".json", ".jsonc":
		_, err = document.JSON(p, f.Data, f.Lines(), path.Base(p) != "package.json" && path.Base(p) != "composer.json")
	case ".xml":
		_, err = document.XML(p, f.Data, f.Lines())
	default:
		_, err = document.TOML(p, f.Data, f.Lines())
	}
	if e, ok := document.AsError(err); ok {
		c.broken = append(c.broken, rules.Broken{Err: e})
	}
}

// context is the build context of a container file: its folder, or the root
// of the tree when only from there the sources that it copies are found.
func (c *conductor) context(dir string, im *fact.Image) string {
	if dir == "" {
		return ""
	}
	for _, cp := range im.Copies {
		if cp.FromStage != "" {
			continue
		}
		for _, s := range cp.Sources {
			s = strings.TrimSuffix(strings.TrimPrefix(s, "./"), "/")
			if s == "." || s == "" || strings.ContainsAny(s, "*?[$") {
				continue
			}
			here := path.Join(dir, s)
			if !c.t.Has(here) && !c.t.HasDir(here) && (c.t.Has(s) || c.t.HasDir(s)) {
				return ""
			}
		}
	}
	return dir
}

// owner finds the component that a descriptor is for: the one in its folder,
// the nearest above it, the one whose folder an image copies, or the only one
// below it.
func (c *conductor) owner(dir string, byDir map[string]*fact.Component, d *fact.Descriptor) *fact.Component {
	if comp := byDir[dir]; comp != nil {
		return comp
	}
	var below []*fact.Component
	for _, comp := range c.report.Components {
		if dir == "" || strings.HasPrefix(comp.Dir, dir+"/") {
			below = append(below, comp)
		}
	}
	if d.Image != nil {
		for _, comp := range below {
			for _, cp := range d.Image.Copies {
				for _, s := range cp.Sources {
					if p := path.Join(d.Image.Context, strings.TrimSuffix(s, "/")); p == comp.Dir || strings.HasPrefix(p, comp.Dir+"/") {
						return comp
					}
				}
			}
		}
	}
	for _, p := range d.Procs {
		for _, comp := range below {
			rel := strings.TrimPrefix(strings.TrimPrefix(comp.Dir, dir), "/")
			if strings.Contains(p.Command, rel+"/") || strings.Contains(p.Command, "cd "+rel) || strings.Contains(p.Command, "--prefix "+rel) || strings.Contains(p.Command, "--chdir "+rel) || strings.Contains(p.Command, rel+".") {
				return comp
			}
		}
	}
	if len(below) == 1 {
		return below[0]
	}
	if len(below) > 0 && len(d.Procs) > 0 {
		return below[0]
	}
	for up := dir; up != ""; {
		up = source.Dir(up)
		if comp := byDir[up]; comp != nil && d.Image == nil && len(d.Procs) == 0 {
			return comp
		}
	}
	return nil
}

// components gathers and judges the components on all cores.
func (c *conductor) components() {
	byName := map[string]survey.Runtime{}
	for _, r := range c.runtimes {
		byName[r.Name()] = r
	}
	work := make(chan *fact.Component)
	var wg sync.WaitGroup
	for range max(1, min(runtime.GOMAXPROCS(0), len(c.report.Components))) {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for comp := range work {
				c.safely(comp, byName[comp.Runtime])
			}
		}()
	}
	for _, comp := range c.report.Components {
		work <- comp
	}
	close(work)
	wg.Wait()
}

// nearMisses are the names that are nearly right, in the root and in the
// folder of each component.
func (c *conductor) nearMisses() []fact.NearMiss {
	var list []fact.NearMiss
	if !slices.ContainsFunc(c.report.Components, func(comp *fact.Component) bool { return comp.Dir == "" }) {
		list = survey.NearMisses(c.folders[""], "", len(c.report.Components) > 0)
	}
	seen := map[string]bool{} // two runtimes may share a folder
	for _, comp := range c.report.Components {
		for _, m := range comp.Misnamed {
			if !seen[m.Path] {
				seen[m.Path] = true
				list = append(list, m)
			}
		}
	}
	return list
}

// safely is the last net under what reads hostile trees: a fault of ours in
// one component is said, and takes nothing else down.
func (c *conductor) safely(comp *fact.Component, r survey.Runtime) {
	defer func() {
		if fault := recover(); fault != nil {
			c.mu.Lock()
			defer c.mu.Unlock()
			c.report.Unknown = append(c.report.Unknown, Unknown{comp.ID, "what it is", fmt.Sprintf("a fault in Ubique itself: %v; please report it", fault), place.Whole(comp.ID)})
		}
	}()
	c.component(comp, r)
}

func (c *conductor) component(comp *fact.Component, r survey.Runtime) {
	r.Gather(c.t, comp, c.folders[comp.Dir])
	comp.Misnamed = survey.NearMisses(c.folders[comp.Dir], comp.Runtime, len(comp.Manifests) > 0)
	for _, d := range comp.Descriptors {
		if d.Image != nil {
			comp.Pins = append(comp.Pins, survey.BasePins(d.Image, comp.Engine())...)
			comp.Install = survey.InstallOf(comp, d.Image)
		}
	}
	sort.SliceStable(comp.Pins, func(i, j int) bool { return comp.Pins[i].Rank < comp.Pins[j].Rank })
	comp.Pins = append(comp.Pins, c.workflowPins(comp)...)
	left, pinned := version.All, false
	for i, p := range comp.Pins {
		comp.Pins[i].Says = survey.Say(p, c.opts.Today)
		if p.What != comp.Engine() || p.Rank == survey.RankCI {
			continue
		}
		pinned = true
		if p.Known {
			left = left.Intersect(p.Set)
		}
	}
	if pinned {
		comp.Version = left.String()
	}
	s := &survey.Starter{Tree: c.t, C: comp, Runtime: r, Cache: survey.NewCache(), Scripts: c.scripts(comp, r), With: c.opts.With, Workspace: func(name string) (string, bool) { return c.node.Package(c.t, name) }}
	for _, b := range c.beginnings(comp, r) {
		comp.Starts = append(comp.Starts, s.Start(b))
	}
	// Code without a manifest still says what it is made with.
	for _, st := range comp.Starts {
		for _, i := range st.Imports {
			if name := r.Framework(i.Package); name != "" && len(comp.Manifests) == 0 && !slices.Contains(comp.Frameworks, name) {
				comp.Frameworks = append(comp.Frameworks, name)
			}
		}
	}
	c.variables(comp)
	comp.Declared = survey.Declarations(c.t, comp)
	verdicts, on := c.applicable(comp)
	var found []rules.Finding
	if !c.opts.Rules {
		for _, st := range comp.Starts {
			if comp.Routes = survey.Routes(st); len(comp.Routes) > 0 {
				break
			}
		}
		if pages := survey.Pages(c.t.Has, comp); len(comp.Routes) == 0 || comp.Runtime != "php" {
			comp.Routes = append(comp.Routes, pages...)
		}
		comp.Shipments = survey.Shipments(c.t, comp)
	}
	if c.opts.Rules {
		found = rules.Run(catalog.All(), c.t, comp, on, c.opts.Today)
	}
	unknown := c.questions(comp, on)
	var with *value.Environ
	for _, st := range comp.Starts {
		env := c.loaded(st, st.Env)
		with = nil
		if c.opts.With != nil {
			e := c.loaded(st, merged(c.opts.With, st.Env))
			with = &e
		}
		st.Listeners = slices.DeleteFunc(st.Listeners, func(l *fact.Listener) bool { // never come to, whatever the host sets
			open := env
			open.Open = true
			return l.Under(open).Outcome == "skipped"
		})
		if with != nil && st.More != nil {
			st.More(*with)
		}
		for _, l := range st.Listeners {
			// Where rules were judged, the program was gone through as a host runs it: what
			// that says decides whether its values are to be believed.
			l.Look(env, with, !c.opts.Rules || slices.ContainsFunc(on, func(o *rules.On) bool {
				if o.Code != st {
					return false
				}
				_, denied := l.Denied(o.Ported, l.Under(o.Ported))
				return denied
			}))
		}
	}
	c.mu.Lock()
	defer c.mu.Unlock()
	c.on[comp.ID] = on
	c.report.Verdicts = append(c.report.Verdicts, verdicts...)
	c.report.Unknown = append(c.report.Unknown, unknown...)
	c.keepLocked(found)
	for _, st := range comp.Starts { // let go of the code
		st.Program, st.Config, st.Settings, st.Secrets, st.Imports, st.More, st.Beside = nil, nil, nil, nil, nil, nil, nil
		st.Stopped, st.Asks, st.Copes, st.Needs = nil, nil, nil, nil
		for _, l := range st.Listeners {
			l.Host, l.Port, l.Bind, l.Guards, l.Follow, l.Asked = nil, nil, nil, nil, nil, nil
		}
	}
	if comp.Dir != "" {
		c.t.Forget(comp.Dir)
	}
}

// workflowPins are the versions that CI sets for a component: of workflows of
// its own folder, or of the root where no other component has its runtime.
func (c *conductor) workflowPins(comp *fact.Component) []fact.Pin {
	c.ci.Do(func() { c.workflows = survey.Workflows(c.t) })
	alone := true
	for _, o := range c.report.Components {
		alone = alone && (o == comp || o.Runtime != comp.Runtime)
	}
	var list []fact.Pin
	for _, w := range c.workflows {
		if w.Pin.What == comp.Engine() && (w.Dir == comp.Dir && (w.Dir != "" || alone) || w.Dir == "" && alone) {
			list = append(list, w.Pin)
		}
	}
	return list
}

func merged(a, b map[string]string) map[string]string {
	m := map[string]string{}
	for k, v := range b {
		m[k] = v
	}
	for k, v := range a {
		m[k] = v
	}
	return m
}

// loaded adds what the code loads from dotenv files that ship: variables that
// are set already stay (documentation of dotenv and python-dotenv).
func (c *conductor) loaded(st *fact.Start, env map[string]string) value.Environ {
	m := merged(env, nil)
	late := map[string]bool{}
	known := value.Environ{Set: m}
	for _, a := range st.Final.Env {
		if a.Value != nil {
			if o := a.Value.Under(known); o.Kind == value.Str {
				known = known.With(map[string]string{a.Name: o.Text})
			}
		}
	}
	for _, d := range st.Dotenv {
		if d.When != nil {
			if holds, ok := d.When.Under(known).Truth(d.When.Py); !ok || !holds {
				continue
			}
		}
		name := d.Path
		if d.By != nil {
			p, ok := st.Program.PathUnder(d.By, known)
			if !ok {
				continue
			}
			name = p
		}
		if c.t.State(name) != source.Shipped {
			continue
		}
		f, err := c.t.Code(name)
		if err != nil {
			continue
		}
		for _, k := range document.Dotenv(name, f.Data, f.Lines()).Kids {
			if _, set := m[k.Key]; !set || d.Over {
				m[k.Key], late[k.Key] = k.Text, true
			}
		}
	}
	return value.Environ{Set: m, Late: late}
}

// scripts looks package scripts up, in this component and in others.
func (c *conductor) scripts(comp *fact.Component, r survey.Runtime) func(dir, name string) (command.Script, bool) {
	return func(dir, name string) (command.Script, bool) {
		if dir == comp.Dir && (comp.Runtime == "node" || comp.Runtime == "deno") {
			s, ok := comp.Scripts[name]
			return s, ok
		}
		p := path.Join(dir, "package.json")
		if !c.t.Has(p) {
			return command.Script{}, false
		}
		f, err := c.t.Document(p)
		if err != nil {
			return command.Script{}, false
		}
		d, err := document.JSON(p, f.Data, f.Lines(), false)
		if err != nil {
			return command.Script{}, false
		}
		s := d.Get("scripts", name)
		if s.Str() == "" {
			return command.Script{}, false
		}
		at := s.At()
		at.Col++
		at.EndCol--
		return command.Script{Text: s.Text, At: at, Vars: command.Configured(d)}, true
	}
}

// beginnings lists the ways to start a component.
func (c *conductor) beginnings(comp *fact.Component, r survey.Runtime) []survey.Beginning {
	var list []survey.Beginning
	for _, d := range comp.Descriptors {
		for _, p := range d.Procs {
			line, err := command.Parse(p.Command, p.At)
			list = append(list, survey.Beginning{Process: p.Name, Command: p.Command, Source: "process file", File: d.File, At: p.At, Line: line, Dir: source.Dir(d.File), Descriptor: d, Err: err})
		}
	}
	if s, ok := comp.Scripts["start"]; ok && comp.Runtime == "node" {
		at := s.At
		line, err := command.Parse("npm start", at)
		list = append(list, survey.Beginning{Process: "web", Command: s.Text, Source: "package script", File: at.File, At: at, Line: line, Dir: comp.Dir, Err: err})
	}
	for _, d := range comp.Descriptors {
		im := d.Image
		if im == nil || !im.HasCmd {
			continue
		}
		in := func(p string) (string, bool) { return container.InTree(im, p) }
		dir := comp.Dir
		if p, ok := container.InTree(im, im.WorkDir+"/."); ok {
			dir = p
		} else if p, ok := container.InTree(im, im.WorkDir); ok && (p == "" || c.t.HasDir(p)) {
			dir = p
		}
		b := survey.Beginning{Process: "web", Command: im.Text, Source: "container", File: d.File, At: im.At, Line: im.Command, Dir: dir, InImage: in, Descriptor: d, Env: map[string]string{}, EnvValues: im.Env}
		for k, v := range im.Env {
			if v.Kind == value.Str {
				b.Env[k] = v.Text
			}
		}
		list = append(list, b)
	}
	for _, n := range []string{"start.sh", "run.sh", "entrypoint.sh", "docker-entrypoint.sh", "bin/start.sh", "scripts/start.sh"} {
		p := comp.Path(n)
		if !c.t.Has(p) {
			continue
		}
		if f, err := c.t.Code(p); err != nil || strings.Contains(string(f.Data), `"$@"`) {
			continue // it goes before another command, and starts nothing by itself
		}
		at := place.Span{File: p, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		line, err := command.Parse("sh "+n, at)
		list = append(list, survey.Beginning{Process: "web", Command: "sh " + n, Source: "start script", File: p, At: at, Line: line, Dir: comp.Dir, Err: err})
		break
	}
	if cmd, file, ok := r.Entry(c.t, comp); ok && (comp.Runtime != "node" || comp.Scripts["start"].Text == "") {
		at := place.Span{File: file, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
		if s := comp.Scripts["start"]; s.Text == cmd {
			at = s.At
		}
		line, err := command.Parse(cmd, at)
		list = append(list, survey.Beginning{Process: "web", Command: cmd, Source: "usual entry", File: file, At: at, Line: line, Dir: comp.Dir, Err: err})
	}
	if len(list) == 0 {
		if cmd, ok := r.Assumed(c.t, comp); ok {
			at := place.Whole(comp.ID)
			line, err := command.Parse(cmd, at)
			list = append(list, survey.Beginning{Process: "web", Command: cmd, Source: "assumed", File: comp.ID, At: at, Line: line, Dir: comp.Dir, Err: err})
		}
	}
	return list
}

// variables sums up the variables that the starts read, each place once.
func (c *conductor) variables(comp *fact.Component) {
	type read struct {
		name string
		at   place.Span
	}
	seen := map[read]bool{}
	for _, st := range comp.Starts {
		for _, v := range st.Variables {
			if !seen[read{v.Name, v.At}] {
				seen[read{v.Name, v.At}] = true
				comp.Variables = append(comp.Variables, v)
			}
		}
	}
	sort.SliceStable(comp.Variables, func(i, j int) bool {
		a, b := comp.Variables[i], comp.Variables[j]
		if a.Name != b.Name {
			return a.Name < b.Name
		}
		return a.At.Before(b.At)
	})
}

// applicable decides on which hosts a component can go at all, and which
// start and environment count there.
func (c *conductor) applicable(comp *fact.Component) ([]Verdict, []*rules.On) {
	var verdicts []Verdict
	var list []*rules.On
	for _, h := range c.hosts {
		na := ""
		switch {
		case !h.Offers(comp.Engine()):
			na = "does not run " + fact.Label(comp.Engine())
		case slices.Contains(h.Needs, "container file") && !hasImage(comp):
			na = "no container file; add a Dockerfile to go there"
		case slices.Contains(comp.Frameworks, "browser application") && h.Route != "image" && !hasProcesses(comp):
			na = "a browser application: it needs a host of static files for what its build makes"
		case len(c.opts.On) == 0 && choose(comp, h) == nil && !hasProcesses(comp) && !comp.Broken:
			// The tree has chosen another kind: only who asks for this one
			// is told what it lacks.
			if other := c.startsElsewhere(comp, h); other != nil {
				na = fmt.Sprintf("no %s; %s says how to start it on %s", strings.Join(h.Starts, ", no "), other.start.At.File, other.host.Name)
			}
		}
		if na != "" {
			verdicts = append(verdicts, Verdict{Component: comp.ID, Host: h.Name, Verdict: "not applicable", Reason: na})
			continue
		}
		on := &rules.On{Host: h, Start: choose(comp, h)}
		on.Code = on.Start
		for _, s := range comp.Starts {
			if on.Code == nil && s.Source == "assumed" && h.Route != "image" {
				on.Code = s
			}
		}
		given := h.Environment()
		under := func(set map[string]string) value.Environ { // a file that wins does so over the port, too
			env := given.With(set)
			if on.Code != nil {
				env = c.loaded(on.Code, env.Set)
			}
			return env
		}
		if on.Code != nil {
			given = given.With(on.Code.Env)
		}
		on.Env = under(nil)
		on.Ported = on.Env
		if h.Port.How == "injected" || h.Port.How == "fixed" {
			on.Port = h.Port.Number
			if on.Port == 0 {
				on.Port = probePort
			}
			if h.Port.Variable != "" {
				on.Ported = under(map[string]string{h.Port.Variable: strconv.Itoa(on.Port)})
			}
		}
		list = append(list, on)
	}
	return verdicts, list
}

// elsewhere is a start that another kind of host takes.
type elsewhere struct {
	host  *host.Contract
	start *fact.Start
}

// startsElsewhere finds the kind of host that a descriptor of the component is
// for, and on which it starts.
func (c *conductor) startsElsewhere(comp *fact.Component, not *host.Contract) *elsewhere {
	for _, h := range c.hosts {
		if h == not || len(h.Needs) == 0 || !h.Offers(comp.Runtime) {
			continue
		}
		if s := choose(comp, h); s != nil && s.Descriptor != nil {
			return &elsewhere{h, s}
		}
	}
	return nil
}

func hasImage(comp *fact.Component) bool {
	for _, d := range comp.Descriptors {
		if d.Image != nil || d.Format == "container file" { // also one that cannot be read
			return true
		}
	}
	return false
}

func hasProcesses(comp *fact.Component) bool {
	for _, d := range comp.Descriptors {
		if len(d.Procs) > 0 {
			return true
		}
	}
	return false
}

// choose takes the start that counts on a host: the first source that is
// there. A process file that lacks the process rules the others out where the
// host demands it.
func choose(comp *fact.Component, h *host.Contract) *fact.Start {
	for _, from := range h.Starts {
		for _, s := range comp.Starts {
			if s.Source == from && s.Process == h.Process {
				return s
			}
		}
		if from == "process file" && h.WebRequired && hasProcesses(comp) {
			return nil
		}
	}
	return nil
}

// read are the runtimes whose code is followed to where it listens.
var read = map[string]bool{"node": true, "python": true, "deno": true, "go": true, "java": true, "ruby": true, "php": true, "rust": true, "dotnet": true, "elixir": true}

// questions lists what could not be told about a component.
func (c *conductor) questions(comp *fact.Component, on []*rules.On) []Unknown {
	var list []Unknown
	seen := map[string]bool{}
	add := func(q, why string, at place.Span) {
		if key := q + why + at.String(); !seen[key] {
			seen[key] = true
			list = append(list, Unknown{comp.ID, q, why, at})
		}
	}
	for _, q := range comp.Unknown {
		add(q.Question, q.Reason, q.At)
	}
	if len(comp.Locks) > 0 {
		switch l := comp.Locks[0]; {
		case l.Problem != "":
			add("whether the lock fits the manifest", l.Problem, l.Top())
		case len(l.Packages) == 0 && len(comp.Dependencies) > 0 && l.Manager != "deno":
			add("whether the lock fits the manifest", "no package was found in it", l.Top())
		}
	}
	for _, d := range comp.Descriptors {
		if d.Image == nil {
			continue
		}
		for _, b := range d.Image.Bases {
			if b.Unknown {
				add("which base image it is built on", b.Text+" is decided by a build argument without a default", b.At)
			}
		}
		if d.Image.Problem != "" {
			add("what it starts", d.Image.Problem, d.Image.At)
		}
	}
	for _, st := range comp.Starts {
		if st.Final.Reason != "" {
			add("what it starts", st.Final.Reason, st.At)
		}
	}
	for _, st := range comp.Starts {
		for _, f := range st.Reached {
			if c.t.InModule(f) {
				add("whether the host has it", f+" lies in a git submodule, which comes only where the host fetches submodules", place.Whole(f))
				break
			}
		}
	}
	for _, o := range on {
		st := o.Code
		if st == nil || st.Final.Reason != "" || st.Final.Missing != nil || st.Target != nil && st.Target.File == "" {
			continue
		}
		if !read[comp.Runtime] {
			if len(st.Listeners) == 0 && st.Final.Program != "" {
				what := comp.Runtime
				if what == "container" {
					what = "the image's own programs"
				} else {
					what = fact.Label(what) + " code"
				}
				add("where it listens", what+" is not followed to the call that listens", st.At)
			}
			continue
		}
		if st.Final.Known == nil && st.Target == nil {
			add("what it starts", st.Final.Path+" is not a program that is known here", st.Final.At)
			continue
		}
		if _, silent := survey.Silent(comp, st); silent {
			continue // port/none
		}
		if st.Final.Program == "php-fpm" {
			continue // behind the host's web server
		}
		if len(st.Listeners) == 0 {
			why, at := "no call that listens was found in what "+st.Command+" reaches", st.At
			if st.Stopped != nil {
				if reason, there := st.Stopped(o.Ported); reason != "" && there.File != "" {
					why, at = "what "+st.Command+" runs could be followed only up to here: "+reason, there
				}
			}
			add("where it listens", why, at)
		}
		for _, l := range st.Listeners {
			if out := l.Under(o.Ported); out.Outcome == "unknown" || out.Outcome == "listens" && out.Interface == "unknown" {
				why := out.Reason
				if why == "" {
					why = "the interface is not decided in the source"
				}
				add("where it listens", why, l.At)
			}
		}
	}
	return list
}

func (c *conductor) keep(found []rules.Finding) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.keepLocked(found)
}

// keepLocked keeps findings that are not accepted, with their source lines.
func (c *conductor) keepLocked(found []rules.Finding) {
	for _, f := range found {
		line := c.line(f.Where)
		if c.accepted(f, line) {
			c.report.Accepted++
			continue
		}
		c.report.Findings = append(c.report.Findings, f)
		c.report.Lines[f.Where] = line
	}
}

func (c *conductor) line(at place.Span) string {
	if at.Line == 0 {
		return ""
	}
	f, err := c.t.Document(at.File)
	if err != nil {
		return ""
	}
	return f.Lines().Text(at.Line)
}

// accepted reports whether somebody accepted the finding: in the
// configuration, or in a comment on its line: "ubique accepts RULE: reason".
func (c *conductor) accepted(f rules.Finding, line string) bool {
	if i := strings.Index(line, "ubique accepts "); i >= 0 {
		rest := line[i+len("ubique accepts "):]
		id, why, ok := strings.Cut(rest, ":")
		if ok && strings.TrimSpace(id) == f.Rule && strings.TrimSpace(why) != "" {
			return true
		}
	}
	for _, a := range c.opts.Deal {
		if a.Rule == f.Rule && (a.File == "" || a.File == f.Where.File) {
			return true
		}
	}
	return false
}

// finish sorts the findings and draws the verdicts.
func (c *conductor) finish() {
	r := c.report
	rules.Sort(r.Findings)
	rules.Mark(r.Findings, func(at place.Span) string { return r.Lines[at] })
	for _, comp := range r.Components {
		for _, on := range c.on[comp.ID] {
			v := Verdict{Component: comp.ID, Host: on.Host.Name, Verdict: "ready"}
			var worst rules.Level
			for _, f := range r.Findings {
				if f.Component != comp.ID {
					continue
				}
				for _, h := range f.Hosts {
					if h.Host != on.Host.Name || h.Level < worst {
						continue
					}
					if h.Level > worst {
						worst, v.Rules, v.Reason = h.Level, nil, f.Message
					}
					if !slices.Contains(v.Rules, f.Rule) {
						v.Rules = append(v.Rules, f.Rule)
					}
				}
			}
			switch worst {
			case rules.Blocker:
				v.Verdict = "blocked"
			case rules.Risk:
				v.Verdict = "at risk"
			}
			if worst < rules.Blocker {
				for _, u := range r.Unknown {
					if u.Component == comp.ID && (u.Question == "what it starts" || u.Question == "where it listens") && c.concerns(u, on) {
						v.Verdict, v.Reason = "unknown", u.Question+": "+u.Reason
						break
					}
				}
			}
			if v.Verdict == "ready" {
				v.Reason = ""
			}
			r.Verdicts = append(r.Verdicts, v)
		}
	}
	hostIndex := map[string]int{}
	for i, h := range r.Hosts {
		hostIndex[h.Name] = i
	}
	sort.SliceStable(r.Verdicts, func(i, j int) bool {
		a, b := r.Verdicts[i], r.Verdicts[j]
		if a.Component != b.Component {
			return a.Component < b.Component
		}
		return hostIndex[a.Host] < hostIndex[b.Host]
	})
}

// concerns tells whether a question is about the start that counts on a host.
func (c *conductor) concerns(u Unknown, on *rules.On) bool {
	if on.Start == nil {
		return false
	}
	if u.At == on.Start.At || u.At == on.Start.Final.At {
		return true
	}
	for _, l := range on.Start.Listeners {
		if l.At == u.At {
			return true
		}
	}
	return false
}

// Hosts loads the kinds that ship and the user's own from files.
func Hosts(files []string) ([]*host.Contract, error) {
	list, err := host.Kinds()
	if err != nil {
		return nil, err
	}
	for _, f := range files {
		h, err := host.Load(f, list)
		if err != nil {
			return nil, err
		}
		for _, k := range list {
			if k.Name == h.Name {
				return nil, fmt.Errorf("%s: there is a host named %s already; give it another name", f, h.Name)
			}
		}
		list = append(list, h)
	}
	return list, nil
}
