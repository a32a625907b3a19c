package render

import (
	"bufio"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"
	"unicode/utf8"

	"ubique/core/check"
	"ubique/core/fact"
	"ubique/core/host"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/survey"
)

const indent = "          "

func title(c *fact.Component) string {
	parts := []string{fact.Label(c.Engine())}
	switch c.Version {
	case "", "any version":
	case "no version":
		parts[0] += " (pins disagree)"
	default:
		parts[0] += " " + c.Version
	}
	return strings.Join(append(parts, c.Frameworks...), " · ")
}

func name(r *check.Report, id string) string {
	if id == "." {
		return "the root of the tree"
	}
	return id
}

// Check shows the findings, component by component, and says what to do
// first.
func Check(w io.Writer, v View, r *check.Report) error {
	b := bufio.NewWriter(w)
	p := &printer{w: b}
	shown := map[string]bool{}
	for _, f := range r.Findings {
		if !shown[f.Component] {
			shown[f.Component] = true
			what := ""
			for _, c := range r.Components {
				if c.ID == f.Component {
					what = title(c)
				}
			}
			heading(p, v, name(r, f.Component), what)
		}
		finding(p, v, r, &f)
	}
	unknowns(p, v, r)
	summary(p, v, r)
	if p.err != nil {
		return p.err
	}
	return b.Flush()
}

func heading(p *printer, v View, left, right string) {
	left, right = line(left), line(right)
	dots := max(3, v.Width-utf8.RuneCountInString(left)-utf8.RuneCountInString(right)-4)
	p.f("\n%s %s %s\n\n", v.paint(bold, "◆ "+left), v.paint(dim, strings.Repeat("·", dots)), right)
}

func finding(p *printer, v View, r *check.Report, f *rules.Finding) {
	level := pad(f.Level.String(), 8)
	p.f("  %s%s  %s\n", v.level(f.Level.String())+strings.Repeat(" ", max(0, utf8.RuneCountInString(level)-len(f.Level.String()))), v.paint(bold, pad(f.Rule, 26)), v.paint(under, line(f.Where.String())))
	msg := f.Message
	if f.Likely {
		msg = "likely: " + msg
	}
	for _, l := range wrap(line(msg), v.Width-len(indent)) {
		p.f("%s%s\n", indent, l)
	}
	snippet(p, v, r.Lines[f.Where], f.Where, strings.HasPrefix(f.Rule, "secret/"))
	for _, s := range f.Trail {
		p.f("%s%s %s  %s\n", indent, v.paint(dim, "↳"), line(s.At.String()), v.paint(dim, line(s.Note)))
	}
	if len(f.Hosts) > 0 {
		var names []string
		for _, h := range f.Hosts {
			n := h.Host
			if h.Level != f.Level {
				n += " (" + h.Level.String() + ")"
			}
			names = append(names, n)
		}
		p.f("%s%s %s\n", indent, v.paint(dim, "on      "), strings.Join(names, ", "))
	}
	if f.Remedy != "" {
		lines := []string{line(f.Remedy)}
		if room := v.Width - len(indent) - 9; utf8.RuneCountInString(lines[0]) > room {
			lines = wrap(lines[0], room)
		}
		for i, l := range lines {
			label := "instead "
			if i > 0 {
				label = "        "
			}
			p.f("%s%s %s\n", indent, v.paint(green, label), v.paint(green, l))
		}
	}
	p.f("\n")
}

// snippet shows the source line with the span marked below it. Lines with a
// secret are not shown.
func snippet(p *printer, v View, text string, at place.Span, secret bool) {
	if strings.TrimSpace(text) == "" || at.Line == 0 || at.Line == at.EndLine && at.Col == at.EndCol {
		return
	}
	if secret {
		cut := max(0, min(at.Col-1, utf8.RuneCountInString(text)))
		text = string([]rune(text)[:cut]) + "(not shown)"
		at.EndCol = at.Col + utf8.RuneCountInString("(not shown)")
		at.EndLine = at.Line
	}
	runes := []rune(text)
	start, end := at.Col-1, at.EndCol-1
	if at.EndLine != at.Line || end > len(runes) {
		end = len(runes)
	}
	start = max(0, min(start, len(runes)))
	// Leading space goes, and long lines are cut around the span.
	lead := 0
	for lead < len(runes) && lead < start && (runes[lead] == ' ' || runes[lead] == '\t') {
		lead++
	}
	runes, start, end = runes[lead:], start-lead, end-lead
	room := v.Width - len(indent) - 9
	before := ""
	if start > room-20 {
		cut := start - 20
		runes, start, end, before = runes[cut:], start-cut, end-cut, "…"
		room--
	}
	if len(runes) > room {
		runes = append(runes[:room:room], '…')
	}
	end = max(min(end, len(runes)), start)
	a, m, z := line(before+string(runes[:start])), line(string(runes[start:end])), line(string(runes[end:]))
	num := fmt.Sprintf("%5d ", at.Line)
	p.f("%s%s%s%s%s\n", indent, v.paint(dim, num+"│ "), a, v.paint(bold, m), z)
	if n := utf8.RuneCountInString(m); n > 0 && !(start == 0 && end == len(runes)) {
		p.f("%s%s%s%s\n", indent, v.paint(dim, "      │ "), strings.Repeat(" ", utf8.RuneCountInString(a)), v.paint(red, strings.Repeat("▔", n)))
	}
}

func unknowns(p *printer, v View, r *check.Report) {
	if len(r.Unknown) == 0 {
		return
	}
	heading(p, v, "could not tell", "")
	const most = 12
	for i, u := range r.Unknown {
		if i == most && len(r.Unknown) > most+3 {
			p.f("  %s\n", v.paint(dim, fmt.Sprintf("and %d more; --format json has them all", len(r.Unknown)-most)))
			break
		}
		where := line(u.At.String())
		p.f("  %s  %s: %s\n", v.paint(under, where), line(u.Question), line(u.Reason))
	}
	p.f("\n")
}

func summary(p *printer, v View, r *check.Report) {
	n := map[rules.Level]int{}
	for _, f := range r.Findings {
		n[f.Level]++
	}
	var hosts, left []string
	for _, h := range r.Hosts {
		if why := nowhere(r, h.Name); why != "" {
			left = append(left, h.Name+" ("+why+")")
			continue
		}
		hosts = append(hosts, h.Name)
	}
	on := ""
	if len(hosts) > 0 {
		on = ", on " + strings.Join(hosts, " and ")
	}
	route := "as git would ship it"
	if r.Route == "upload" {
		route = "as the folder would be uploaded (no git index here)"
	}
	p.f("%s read %s%s.\n", count(len(r.Components), "component", "components"), route, on)
	if len(left) > 0 && len(hosts) > 0 {
		for _, l := range wrap("Not judged: "+line(strings.Join(left, "; "))+".", v.Width) {
			p.f("%s\n", v.paint(dim, l))
		}
	}
	if len(r.Findings) == 0 {
		if len(r.Unknown) > 0 {
			p.f("%s Nothing was found that would go wrong; %s could not be told (above).\n", v.paint(green, "✓"), count(len(r.Unknown), "question", "questions"))
		} else if why := nowhere(r, ""); why != "" {
			p.f("%s Nothing was judged: no host here is for it (%s).\n", v.paint(yellow, "–"), line(why))
		} else {
			p.f("%s Nothing was found that would go wrong. Ship it.\n", v.paint(green, "✓"))
		}
		return
	}
	p.f("%s: %s, %s, %d advice", count(len(r.Findings), "finding", "findings"), v.paint(red, count(n[rules.Blocker], "blocker", "blockers")), v.paint(yellow, count(n[rules.Risk], "risk", "risks")), n[rules.Advice])
	if r.Accepted > 0 {
		p.f(" (%d accepted)", r.Accepted)
	}
	p.f(".\n")
	p.f("%s %s\n", v.paint(bold, "Do this first:"), line(first(r)))
}

// nowhere says why no component can go on a host, or on any host where none is
// named; empty where one can.
func nowhere(r *check.Report, host string) string {
	why := ""
	for _, x := range r.Verdicts {
		if host != "" && x.Host != host {
			continue
		}
		if x.Verdict != "not applicable" {
			return ""
		}
		if why == "" {
			why = x.Reason
		}
	}
	return why
}

// first is the one sentence that says what to do first: the first finding of
// the worst level, in the order of the work.
func first(r *check.Report) string {
	worst := r.Worst()
	for _, f := range r.Findings {
		if f.Level == worst {
			if f.Remedy == "" {
				return fmt.Sprintf("look at %s (%s).", f.Where, f.Rule)
			}
			return fmt.Sprintf("%s, at %s: %s", f.Rule, f.Where, f.Remedy)
		}
	}
	return ""
}

// Survey shows what was read, one block a component.
func Survey(w io.Writer, v View, r *check.Report) error {
	b := bufio.NewWriter(w)
	p := &printer{w: b}
	for _, c := range r.Components {
		heading(p, v, name(r, c.ID), title(c))
		block(p, v, r, c)
	}
	if len(r.Components) == 0 {
		p.f("No component was found: nothing here starts with a runtime that Ubique reads, and there is no page and no container file.\n")
	}
	unknowns(p, v, r)
	if len(r.Unknown) == 0 && len(r.Components) > 0 {
		p.f("\n")
	}
	route := "git: the files that it tracks"
	if r.Route == "upload" {
		route = "upload: the folder less what is ignored (git tracks nothing here)"
	}
	p.f("%s. %s, %s.", route, count(r.Shipped, "file ships", "files ship"), count(r.LeftOut, "file or folder stays behind", "files and folders stay behind"))
	if len(r.Skipped) > 0 {
		some := r.Skipped[:min(3, len(r.Skipped))]
		p.f(" Among them: %s.", line(strings.Join(some, ", ")))
	}
	p.f("\n")
	if p.err != nil {
		return p.err
	}
	return b.Flush()
}

// rows prints a label once and its rows below each other in columns.
func rows(p *printer, v View, label string, list [][]string) {
	if len(list) == 0 {
		return
	}
	var width []int
	for _, row := range list {
		last := len(row) - 1
		for last > 0 && row[last] == "" {
			last--
		}
		for i, cell := range row {
			if i == len(width) {
				width = append(width, 0)
			}
			if i < last { // what ends a row stands in no column
				width[i] = min(max(width[i], utf8.RuneCountInString(line(cell))), 48)
			}
		}
	}
	for i, row := range list {
		l := label
		if i > 0 {
			l = ""
		}
		out := ""
		for j, cell := range row {
			cell = line(cell)
			if cell == "" && width[j] == 0 {
				continue
			}
			if j < len(row)-1 {
				cell = pad(cell+"  ", width[j]+2)
			} else {
				cell = v.paint(dim, cell)
			}
			out += cell
		}
		p.f("  %s%s\n", v.paint(dim, pad(l, 12)), strings.TrimRight(out, " "))
	}
}

func block(p *printer, v View, r *check.Report, c *fact.Component) {
	var pins, manifests, starts, listens, reads, desc [][]string
	for _, x := range c.Pins {
		means := x.Set.String()
		if x.Alias {
			means = "an alias"
		} else if !x.Known {
			means = "not understood"
		}
		if means == x.Text {
			means = ""
		}
		text := x.Text
		if x.What != c.Runtime {
			text = fact.Label(x.What) + " " + text
		}
		pins = append(pins, []string{text, means, x.Says, x.From + ", " + x.At.String()})
	}
	known := 0
	for _, x := range c.Pins {
		if x.What == c.Engine() && x.Known && x.Rank < 4 {
			known++
		}
	}
	if known > 1 {
		pins = append(pins, []string{"together", c.Version, ""})
	}
	if len(c.Pins) == 0 {
		pins = [][]string{{"not pinned", ""}}
	}
	for _, m := range c.Manifests {
		lock := "no lock"
		if m.Lock != "" && m.Lock != m.File {
			lock = "lock " + m.Lock
		} else if m.Lock != "" {
			lock = "every version given"
		}
		for _, l := range c.Locks {
			if l.File == m.Lock {
				lock += fmt.Sprintf(" (%s)", count(len(l.Packages), "package", "packages"))
				if l.Problem != "" {
					lock = "lock " + l.File + ": " + l.Problem
				}
			}
		}
		manifests = append(manifests, []string{m.File, m.Manager, lock, declares(c, m.File)})
	}
	for _, l := range c.Locks {
		if len(c.Manifests) > 0 && l.Manager != c.Locks[0].Manager {
			manifests = append(manifests, []string{l.File, l.Manager, "another lock", ""})
		}
	}
	if len(manifests) == 0 {
		manifests = [][]string{{"none", ""}}
	}
	for _, s := range c.Starts {
		goal := s.Final.Reason
		if s.Target != nil {
			goal = "→ " + s.Target.Named
			if s.Target.File != "" && s.Target.File != s.Target.Named {
				goal = "→ " + s.Target.File
			}
			if s.Target.Sourced != "" {
				goal += " (built from " + s.Target.Sourced + ")"
			}
		} else if goal == "" {
			goal = "→ " + s.Final.Program
		}
		starts = append(starts, []string{s.Process, s.Command, s.Source + ", " + s.At.String()}, []string{"", goal})
		for _, l := range s.Listeners {
			listens = append(listens, []string{l.Process, listening(l), s.Source, l.At.String()})
		}
	}
	if len(starts) == 0 {
		starts = [][]string{{"nothing says how", ""}}
		switch {
		case slices.Contains(c.Frameworks, "browser application"):
			starts[0][0] = "nothing: its build makes files for a host of static files"
		case c.Runtime == "static":
			starts[0][0] = "nothing: a host of static files serves it"
		}
	}
	for _, x := range c.Variables {
		how := ""
		switch {
		case x.HasFall && x.Fallback == "":
			how = "else empty"
		case x.HasFall:
			how = "else " + x.Fallback
		case x.Required:
			how = "must be set"
		}
		reads = append(reads, []string{x.Name, how, x.At.String()})
	}
	for _, d := range c.Descriptors {
		state := d.How
		if d.Err != nil {
			state = "cannot be read: " + d.Err.Expected
		}
		desc = append(desc, []string{path.Clean(d.File), d.Format, state})
	}
	rows(p, v, "version", pins)
	rows(p, v, "manifest", manifests)
	rows(p, v, "makes", makes(c))
	rows(p, v, "starts", starts)
	rows(p, v, "listens", listens)
	if r.With != nil {
		var under [][]string
		for _, s := range c.Starts {
			for _, l := range s.Listeners {
				if l.View.Under != nil {
					row := []string{l.Process, outcome(*l.View.Under), s.Source, l.At.String()}
					if !slices.ContainsFunc(under, func(x []string) bool { return slices.Equal(x, row) }) {
						under = append(under, row)
					}
				}
			}
		}
		if len(under) > 0 {
			rows(p, v, "under", [][]string{{environ(r.With)}})
			rows(p, v, "", under)
		}
	}
	rows(p, v, "answers", answers(c))
	rows(p, v, "reads", reads)
	rows(p, v, "described", desc)
	ships, stays := shipped(c)
	rows(p, v, "ships", ships)
	rows(p, v, "stays", stays)
}

// declares counts the packages that a manifest declares.
func declares(c *fact.Component, file string) string {
	run, dev := 0, 0
	for _, d := range c.Dependencies {
		if d.File != file || d.Group == "workspace root" || d.Group == "indirect" || strings.Contains(d.Name, "[") {
			continue
		}
		if d.Dev {
			dev++
		} else {
			run++
		}
	}
	s := count(run, "package", "packages") + " to run"
	if dev > 0 {
		s += fmt.Sprintf(", %d for development", dev)
	}
	return s
}

// makes says what the build makes, with which command, and what the web
// server serves.
func makes(c *fact.Component) [][]string {
	var list [][]string
	kinds := map[string]string{"files": "files for a host of static files", "jar": "a jar", "war": "a war", "binary": "a program", "assembly": "an assembly", "release": "a release", "folder": "a folder", "server": "a server"}
	for _, a := range c.Artefacts {
		what := kinds[a.Kind]
		if a.Detail != "" && a.Kind != "binary" {
			what += ", " + a.Detail
		}
		by := ""
		if a.Build != "" {
			by = "by " + a.Build
		}
		list = append(list, []string{a.Path, what, by})
	}
	if c.Root != "" {
		list = append(list, []string{c.Root, "the folder that the web server serves", ""})
	}
	return list
}

// shipped says what reaches a host by each route, and what stays behind.
func shipped(c *fact.Component) (ships, stays [][]string) {
	const most = 8
	for _, s := range c.Shipments {
		from := s.Root
		if from == "" {
			from = "the tree"
		}
		row := []string{s.Route, count(s.Files, "file", "files") + " of " + from, s.By}
		if len(s.Whole) > 0 {
			row[2] += ", and with it " + strings.Join(s.Whole, ", ")
		}
		ships = append(ships, row)
		for i, l := range s.Left {
			if i == most && len(s.Left) > most+2 {
				stays = append(stays, []string{s.Route, fmt.Sprintf("and %d more", len(s.Left)-most), ""})
				break
			}
			name := l.Path
			if l.Files > 1 && s.Route != "image" {
				name += fmt.Sprintf(" (%d files)", l.Files)
			} else if l.Files > 1 {
				name += fmt.Sprintf(" and %d more", l.Files-1)
			}
			why := l.Why
			if l.At.Line > 0 {
				why += " by " + l.At.String()
			}
			stays = append(stays, []string{s.Route, name, why})
		}
	}
	return ships, stays
}

func environ(with map[string]string) string {
	var list []string
	for k, v := range with {
		list = append(list, k+"="+v)
	}
	slices.Sort(list)
	if len(list) == 0 {
		return "an empty environment"
	}
	return strings.Join(list, " ")
}

var interfaces = map[string]string{"any": "any interface", "loopback": "loopback only", "unknown": "interface not known", "": "interface not known"}

func iface(s string) string {
	if t, ok := interfaces[s]; ok {
		return t
	}
	return s
}

func listening(l *fact.Listener) string {
	port := "port not known"
	switch l.View.PortKind {
	case "number":
		port = fmt.Sprintf("port %d", l.View.Number)
		if l.View.Number == 0 {
			port = "a port that the kernel chooses"
		}
	case "variable":
		port = "port from " + l.View.Variable
		if l.View.Fallback != "" {
			port += ", else " + l.View.Fallback
		}
	}
	return iface(l.View.Interface) + ", " + port
}

func outcome(o fact.Outcome) string {
	switch o.Outcome {
	case "listens":
		if strings.HasPrefix(o.Interface, "unix:") {
			return "a socket, " + o.Interface
		}
		if o.Port == 0 {
			return iface(o.Interface) + ", a port that the kernel chooses"
		}
		return fmt.Sprintf("%s, %d", iface(o.Interface), o.Port)
	case "exits":
		return "ends at start: " + o.Reason
	case "skipped":
		return "does not listen: " + o.Reason
	}
	return "could not tell: " + o.Reason
}

// Matrix shows components by hosts.
func Matrix(w io.Writer, v View, r *check.Report) error {
	b := bufio.NewWriter(w)
	p := &printer{w: b}
	width := 10
	for _, c := range r.Components {
		width = max(width, min(40, utf8.RuneCountInString(line(c.ID))))
	}
	p.f("\n  %s", pad("", width+2))
	for _, h := range r.Hosts {
		p.f("%s", v.paint(bold, pad(h.Name, 18)))
	}
	p.f("\n")
	cell := map[string]check.Verdict{}
	for _, x := range r.Verdicts {
		cell[x.Component+"\x00"+x.Host] = x
	}
	sign := map[string]string{"ready": "● ready", "at risk": "◐ at risk", "blocked": "○ blocked", "unknown": "? unknown", "not applicable": "– not applicable"}
	style := map[string]string{"ready": green, "at risk": yellow, "blocked": red, "unknown": blue, "not applicable": dim}
	for _, c := range r.Components {
		p.f("  %s", pad(line(c.ID), width+2))
		for _, h := range r.Hosts {
			x := cell[c.ID+"\x00"+h.Name]
			p.f("%s", v.paint(style[x.Verdict], pad(sign[x.Verdict], 18)))
		}
		p.f("\n")
	}
	p.f("\n")
	var apart []string // reasons why something does not apply, and where
	where := map[string][]string{}
	for _, x := range r.Verdicts {
		if x.Verdict == "ready" || x.Reason == "" {
			continue
		}
		if x.Verdict == "not applicable" {
			key := x.Host + "\x00" + x.Reason
			if where[key] == nil {
				apart = append(apart, key)
			}
			where[key] = append(where[key], line(x.Component))
			continue
		}
		head := fmt.Sprintf("  %s on %s: ", line(x.Component), x.Host)
		rest := line(x.Reason)
		if len(x.Rules) > 0 {
			rest = x.Rules[0] + ", " + rest
		}
		for i, l := range wrap(rest, max(30, v.Width-6)) {
			if i == 0 {
				p.f("%s%s\n", v.paint(bold, head), v.paint(style[x.Verdict], x.Verdict))
			}
			p.f("      %s\n", l)
		}
	}
	for _, key := range apart {
		host, why, _ := strings.Cut(key, "\x00")
		for i, l := range wrap(strings.Join(where[key], ", "), max(30, v.Width-30)) {
			if i == 0 {
				l += " on " + host + ": " + v.paint(dim, "not applicable")
			}
			p.f("  %s\n", l)
		}
		p.f("      %s\n", line(why))
	}
	if len(r.Components) == 0 {
		p.f("  No component was found.\n")
	}
	p.f("\n")
	if p.err != nil {
		return p.err
	}
	return b.Flush()
}

// Rules lists rules.
func Rules(w io.Writer, v View, list []*rules.Rule) error {
	p := &printer{w: w}
	family := ""
	for _, r := range list {
		if r.Family() != family {
			family = r.Family()
			p.f("\n%s\n", v.paint(bold, family))
		}
		p.f("  %s %s %s\n", pad(r.ID, 28), v.paint(map[string]string{"blocker": red, "risk": yellow, "advice": blue}[r.Level.String()], pad(r.Level.String(), 9)), r.Title)
	}
	p.f("\nubique rules ID explains one.\n")
	return p.err
}

// Rule explains one rule.
func Rule(w io.Writer, v View, r *rules.Rule) error {
	p := &printer{w: w}
	p.f("\n%s  %s  %s\n\n", v.paint(bold, r.ID), v.level(r.Level.String()), r.Title)
	code := false
	for l := range strings.SplitSeq(strings.TrimRight(r.Doc, "\n"), "\n") {
		if strings.HasPrefix(l, "```") {
			code = !code
			continue
		}
		if code {
			p.f("      %s\n", v.paint(blue, l))
			continue
		}
		if l == "" {
			p.f("\n")
			continue
		}
		for _, x := range wrap(strings.ReplaceAll(l, "**", ""), v.Width-4) {
			p.f("  %s\n", x)
		}
	}
	p.f("\n")
	return p.err
}

// Hosts lists hosts.
func Hosts(w io.Writer, v View, list []*host.Contract) error {
	p := &printer{w: w}
	p.f("\n")
	for _, h := range list {
		p.f("  %s %s\n", v.paint(bold, pad(h.Name, 12)), h.Title)
	}
	p.f("\nubique hosts NAME explains one. A host of your own is a YAML file that extends one of these;\nubique.yaml names it under host-files.\n")
	return p.err
}

// Host explains one host.
func Host(w io.Writer, v View, h *host.Contract) error {
	p := &printer{w: w}
	p.f("\n%s  %s\n\n", v.paint(bold, h.Name), h.Title)
	for _, l := range wrap(h.About, v.Width-4) {
		p.f("  %s\n", l)
	}
	p.f("\n")
	for _, s := range h.Words() {
		for i, l := range wrap(s, v.Width-6) {
			mark := "  "
			if i == 0 {
				mark = "· "
			}
			p.f("  %s%s\n", mark, l)
		}
	}
	p.f("\n")
	return p.err
}

// DemoEnd says where the demo is and what to try next.
func DemoEnd(w io.Writer, v View, dir string) error {
	p := &printer{w: w}
	p.f("\nThe demo tree is in %s\n", line(dir))
	p.f("Try next:  ubique matrix %s\n", line(dir))
	p.f("           ubique survey %s --with PORT=5123\n", line(dir))
	p.f("           ubique rules port/name-case\n")
	return p.err
}

// answers shows the routes that a host may ask for: the root and those that
// tell whether the program is well; the others are counted.
func answers(c *fact.Component) [][]string {
	var list [][]string
	others := 0
	for _, r := range c.Routes {
		if r.Path != "/" && r.Path != "*" && !survey.Health(r.Path) || len(list) >= 8 {
			others++
			continue
		}
		method, p := r.Method, r.Path
		if method == "any" {
			method = "any method"
		}
		if p == "*" {
			p = "every path"
		}
		list = append(list, []string{p, method, r.At.String()})
	}
	if others > 0 && len(list) == 0 {
		list = append(list, []string{"nothing at /, and no path that tells whether it is well"})
	}
	if others > 0 {
		list = append(list, []string{"", "", fmt.Sprintf("and %d more", others)})
	}
	return list
}
