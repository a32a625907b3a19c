package render

import (
	"encoding/json"
	"io"
	"slices"
	"strings"

	"ubique/core/check"
	"ubique/core/fact"
)

// The JSON report, version 1. The published schema is docs/report.schema.json.
type jsonReport struct {
	Schema     string          `json:"schema"`
	Tool       jsonTool        `json:"tool"`
	Tree       jsonTree        `json:"tree"`
	Components []jsonComponent `json:"components"`
	Findings   []jsonFinding   `json:"findings"`
	Verdicts   []jsonVerdict   `json:"verdicts"`
	Unknown    []jsonUnknown   `json:"unknown"`
}

type jsonTool struct {
	Name    string `json:"name"`
	Version string `json:"version"`
}

type jsonTree struct {
	Root    string   `json:"root"`
	Route   string   `json:"route"`
	Shipped int      `json:"shipped"`
	LeftOut int      `json:"left_out"`
	Skipped []string `json:"skipped"`
}

type jsonComponent struct {
	ID          string           `json:"id"`
	Path        string           `json:"path"`
	Runtime     jsonRuntime      `json:"runtime"`
	Pins        []jsonPin        `json:"pins"`
	Manifests   []jsonManifest   `json:"manifests"`
	Starts      []jsonStart      `json:"starts"`
	Listeners   []jsonListener   `json:"listeners"`
	Variables   []jsonVariable   `json:"variables"`
	Descriptors []jsonDescriptor `json:"descriptors"`
	Artefacts   []jsonArtefact   `json:"artefacts"`
	Packages    []jsonPackage    `json:"dependencies"`
	Shipments   []jsonShipment   `json:"shipments,omitempty"`
	Routes      []jsonRoute      `json:"routes,omitempty"`
}

type jsonRoute struct {
	Method string `json:"method"`
	Path   string `json:"path"`
	File   string `json:"file"`
	Line   int    `json:"line"`
}

type jsonPackage struct {
	Name  string `json:"name"`
	Asked string `json:"asked"`
	Range string `json:"range"`
	Dev   bool   `json:"development"`
	File  string `json:"file"`
	Line  int    `json:"line"`
}

type jsonArtefact struct {
	Kind   string `json:"kind"`
	Path   string `json:"path"`
	Detail string `json:"detail"`
	Build  string `json:"build"`
	File   string `json:"file"`
	Line   int    `json:"line"`
}

type jsonShipment struct {
	Route string     `json:"route"`
	Root  string     `json:"root"`
	By    string     `json:"by"`
	Files int        `json:"files"`
	Left  []jsonLeft `json:"left"`
}

type jsonLeft struct {
	Path  string `json:"path"`
	Files int    `json:"files"`
	Why   string `json:"why"`
	File  string `json:"file"`
	Line  int    `json:"line"`
}

type jsonRuntime struct {
	Name      string   `json:"name"`
	Version   string   `json:"version"`
	Framework []string `json:"framework"`
}

type jsonPin struct {
	What  string `json:"what"`
	Text  string `json:"text"`
	Range string `json:"range"`
	From  string `json:"from"`
	Says  string `json:"says"`
	File  string `json:"file"`
	Line  int    `json:"line"`
}

type jsonManifest struct {
	File     string `json:"file"`
	Manager  string `json:"manager"`
	Lock     string `json:"lock"`
	Format   string `json:"lock_format"`
	Packages int    `json:"locked_packages"`
}

type jsonStart struct {
	Process string `json:"process"`
	Command string `json:"command"`
	Source  string `json:"source"`
	File    string `json:"file"`
	Line    int    `json:"line"`
	Program string `json:"program"`
	Target  string `json:"target"`
}

type jsonPort struct {
	Kind     string `json:"kind"`
	Number   *int   `json:"number"`
	Variable string `json:"variable"`
	Fallback string `json:"fallback"`
}

type jsonUnder struct {
	Outcome   string `json:"outcome"`
	Interface string `json:"interface"`
	Port      *int   `json:"port"`
	Reason    string `json:"reason"`
}

type jsonListener struct {
	Process   string     `json:"process"`
	Source    string     `json:"source"`
	Interface string     `json:"interface"`
	Port      jsonPort   `json:"port"`
	Via       string     `json:"via"`
	File      string     `json:"file"`
	Line      int        `json:"line"`
	Under     *jsonUnder `json:"under,omitempty"`
}

type jsonVariable struct {
	Name     string `json:"name"`
	Required bool   `json:"required"`
	Fallback string `json:"fallback"`
	File     string `json:"file"`
	Line     int    `json:"line"`
}

type jsonDescriptor struct {
	File   string `json:"file"`
	Format string `json:"format"`
	How    string `json:"how"`
}

type jsonWhere struct {
	File    string `json:"file"`
	Line    int    `json:"line"`
	Col     int    `json:"column"`
	EndLine int    `json:"end_line"`
	EndCol  int    `json:"end_column"`
}

type jsonStep struct {
	File string `json:"file"`
	Line int    `json:"line"`
	Note string `json:"note"`
}

type jsonFinding struct {
	Rule        string            `json:"rule"`
	Level       string            `json:"level"`
	Certainty   string            `json:"certainty"`
	Component   string            `json:"component"`
	Hosts       []string          `json:"hosts"`
	Levels      map[string]string `json:"levels"`
	Message     string            `json:"message"`
	Where       jsonWhere         `json:"where"`
	Trail       []jsonStep        `json:"trail"`
	Remedy      string            `json:"remedy"`
	Fingerprint string            `json:"fingerprint"`
}

type jsonVerdict struct {
	Component string   `json:"component"`
	Host      string   `json:"host"`
	Verdict   string   `json:"verdict"`
	Rules     []string `json:"rules"`
	Reason    string   `json:"reason"`
}

type jsonUnknown struct {
	Component string `json:"component"`
	Question  string `json:"question"`
	Reason    string `json:"reason"`
	File      string `json:"file"`
	Line      int    `json:"line"`
}

// some gives an empty list in the place of none, so that a list is a list.
func some[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

// JSON writes the report as JSON.
func JSON(w io.Writer, version string, r *check.Report) error {
	out := jsonReport{Schema: "ubique/report/1", Tool: jsonTool{"ubique", version}, Tree: jsonTree{r.Root, string(r.Route), r.Shipped, r.LeftOut, some(r.Skipped)},
		Components: []jsonComponent{}, Findings: []jsonFinding{}, Verdicts: []jsonVerdict{}, Unknown: []jsonUnknown{}}
	for _, c := range r.Components {
		out.Components = append(out.Components, component(c))
	}
	for _, f := range r.Findings {
		j := jsonFinding{Rule: f.Rule, Level: f.Level.String(), Certainty: "certain", Component: f.Component, Hosts: []string{}, Levels: map[string]string{}, Message: f.Message,
			Where: jsonWhere(f.Where), Trail: []jsonStep{}, Remedy: f.Remedy, Fingerprint: f.Fingerprint}
		if f.Likely {
			j.Certainty = "likely"
		}
		for _, h := range f.Hosts {
			j.Hosts = append(j.Hosts, h.Host)
			j.Levels[h.Host] = h.Level.String()
		}
		for _, s := range f.Trail {
			j.Trail = append(j.Trail, jsonStep{s.At.File, s.At.Line, s.Note})
		}
		out.Findings = append(out.Findings, j)
	}
	for _, v := range r.Verdicts {
		out.Verdicts = append(out.Verdicts, jsonVerdict{v.Component, v.Host, v.Verdict, some(v.Rules), v.Reason})
	}
	for _, u := range r.Unknown {
		out.Unknown = append(out.Unknown, jsonUnknown{u.Component, u.Question, u.Reason, u.At.File, u.At.Line})
	}
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(out)
}

func component(c *fact.Component) jsonComponent {
	j := jsonComponent{ID: c.ID, Path: c.Dir, Runtime: jsonRuntime{c.Engine(), c.Version, some(c.Frameworks)},
		Pins: []jsonPin{}, Manifests: []jsonManifest{}, Starts: []jsonStart{}, Listeners: []jsonListener{}, Variables: []jsonVariable{}, Descriptors: []jsonDescriptor{}}
	if j.Path == "" {
		j.Path = "."
	}
	for _, p := range c.Pins {
		rng := ""
		if p.Known {
			rng = p.Set.String()
		}
		j.Pins = append(j.Pins, jsonPin{p.What, p.Text, rng, p.From, p.Says, p.At.File, p.At.Line})
	}
	for _, m := range c.Manifests {
		x := jsonManifest{File: m.File, Manager: m.Manager, Lock: m.Lock}
		for _, l := range c.Locks {
			if l.File == m.Lock {
				x.Format, x.Packages = l.Format, len(l.Packages)
			}
		}
		j.Manifests = append(j.Manifests, x)
	}
	for _, s := range c.Starts {
		x := jsonStart{s.Process, s.Command, s.Source, s.At.File, s.At.Line, s.Final.Program, ""}
		if s.Target != nil {
			x.Target = s.Target.Named
			if s.Target.File != "" && s.Target.Callable == "" {
				x.Target = s.Target.File
			}
		}
		j.Starts = append(j.Starts, x)
		for _, l := range s.Listeners {
			y := listener(l)
			y.Source = s.Source
			if !slices.ContainsFunc(j.Listeners, func(z jsonListener) bool { return same(z, y) }) {
				j.Listeners = append(j.Listeners, y)
			}
		}
	}
	for _, r := range c.Routes {
		j.Routes = append(j.Routes, jsonRoute{r.Method, r.Path, r.At.File, r.At.Line})
	}
	for _, v := range c.Variables {
		j.Variables = append(j.Variables, jsonVariable{v.Name, v.Required, v.Fallback, v.At.File, v.At.Line})
	}
	for _, d := range c.Descriptors {
		j.Descriptors = append(j.Descriptors, jsonDescriptor{d.File, d.Format, d.How})
	}
	j.Packages = []jsonPackage{}
	for _, d := range c.Dependencies {
		if d.Group == "workspace root" || strings.Contains(d.Name, "[") {
			continue
		}
		x := jsonPackage{Name: d.Name, Asked: d.Spec, Dev: d.Dev, File: d.File, Line: d.At.Line}
		if d.Known {
			x.Range = d.Set.String()
		}
		j.Packages = append(j.Packages, x)
	}
	j.Artefacts = []jsonArtefact{}
	for _, a := range c.Artefacts {
		j.Artefacts = append(j.Artefacts, jsonArtefact{a.Kind, a.Path, a.Detail, a.Build, a.At.File, a.At.Line})
	}
	for _, s := range c.Shipments {
		x := jsonShipment{s.Route, s.Root, s.By, s.Files, []jsonLeft{}}
		for _, l := range s.Left {
			x.Left = append(x.Left, jsonLeft{l.Path, l.Files, l.Why, l.At.File, l.At.Line})
		}
		j.Shipments = append(j.Shipments, x)
	}
	return j
}

func same(a, b jsonListener) bool {
	return a.Process == b.Process && a.Source == b.Source && a.File == b.File && a.Line == b.Line && a.Interface == b.Interface && a.Port.Kind == b.Port.Kind && a.Port.Variable == b.Port.Variable && (a.Port.Number == nil) == (b.Port.Number == nil) && (a.Port.Number == nil || *a.Port.Number == *b.Port.Number)
}

func listener(l *fact.Listener) jsonListener {
	v := l.View
	j := jsonListener{Process: l.Process, Interface: v.Interface, Via: l.Via, File: l.At.File, Line: l.At.Line, Port: jsonPort{Kind: v.PortKind, Variable: v.Variable, Fallback: v.Fallback}}
	if v.PortKind == "number" {
		j.Port.Number = &v.Number
	}
	if o := v.Under; o != nil {
		u := &jsonUnder{Outcome: o.Outcome, Interface: o.Interface, Reason: o.Reason}
		if o.Outcome == "listens" && o.Port >= 0 {
			u.Port = &o.Port
		}
		j.Under = u
	}
	return j
}
