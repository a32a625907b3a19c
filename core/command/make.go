package command

import (
	"maps"
	"path"
	"slices"
	"strings"

	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// What make runs for a target: the recipes of what it needs, and its own (POSIX.1-2024,
// "make"; GNU Make 4.4 manual, "How to Use Variables", "Variables from the
// Environment", "Recipe Execution").

// makefile is what stands in a file of make.
type makefile struct {
	vars    map[string]makeVar
	order   []string
	rules   map[string]*makeRule
	first   string // the target that is made where none is named
	exports map[string]bool
	all     bool // all variables are exported
	work    int  // what was expanded so far
	open    bool // it takes in a file that is not there to be read
	some    bool // it takes in a file, nobody knows which

	undecided bool           // a condition that is not understood
	with      *value.Environ // the environment, where everything is worked out under it
	has       func(name string) bool
	given     map[string]*value.Value
}

type makeVar struct {
	text    string
	unset   bool // it counts only where the environment has none (?=)
	unknown bool // made by a condition or a function of make
}

type makeRule struct {
	needs []string
	lines []string
	at    place.Span // of the first line of its recipe
}

// MakeNames are the files that make looks for, in this order (GNU make 4.4, "What
// Name to Give Your Makefile").
var MakeNames = []string{"GNUmakefile", "makefile", "Makefile"}

// makeRun follows a target of make.
func makeRun(words []Word, c Context, env []Assign, steps []value.Step, depth int) (Final, bool) {
	w := words[0]
	dir, file, target := c.Dir, "", ""
	given := map[string]*value.Value{}
	var names []string
	for i := 1; i < len(words); i++ {
		a := words[i]
		name, text, set := strings.Cut(a.Text, "=")
		switch {
		case (a.Text == "-C" || a.Text == "-f") && i+1 < len(words) && words[i+1].Literal():
			i++
			if a.Text == "-f" {
				file = words[i].Text
			} else {
				dir = path.Join(dir, words[i].Text)
			}
		case strings.HasPrefix(a.Text, "-"):
		case set && name != "" && strings.Trim(name, "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_") == "":
			v := value.Text(text, a.At)
			if !a.Literal() {
				if a.Value == nil || a.Value.Kind != value.Op || a.Value.Text != "concat" || len(a.Value.Kids) == 0 || a.Value.Kids[0].Kind != value.Str {
					return Final{}, false
				}
				_, head, _ := strings.Cut(a.Value.Kids[0].Text, "=")
				v = value.Concat(append([]*value.Value{value.Text(head, a.At)}, a.Value.Kids[1:]...)...)
			}
			given[name] = v
			names = append(names, name)
		case !a.Literal():
			return Final{}, false
		case target == "":
			target = a.Text
		}
	}
	if file == "" {
		for _, n := range MakeNames {
			if c.Tree.Has(path.Join(dir, n)) {
				file = n
				break
			}
		}
	}
	p := path.Join(dir, file)
	if file == "" || !c.Tree.Has(p) {
		return Final{}, false
	}
	taken := 0
	read := func(name string) (string, bool) {
		if taken++; taken > 32 { // files that take in themselves
			return "", false
		}
		if c.Tree.State(name) != source.Shipped {
			return "", false
		}
		f, err := c.Tree.Code(name)
		if err != nil {
			return "", false
		}
		return string(f.Data), true
	}
	text, ok := read(p)
	if !ok {
		return Final{}, false
	}
	m := readMake(p, dir, text, read, 0, nil)
	if target == "" {
		target = m.first
	}
	if m.rules[target] == nil {
		return Final{}, false
	}
	body, at, ok := m.script(target, given)
	if again := m; !ok && c.With != nil {
		taken = 0
		again = &makefile{with: c.With, given: given, has: func(name string) bool {
			p, ok := source.Join(dir, name)
			return ok && c.Tree.Has(p)
		}}
		again = readMake(p, dir, text, read, 0, again)
		if again.rules[target] != nil && !again.undecided {
			if b, a, done := again.script(target, given); done {
				body, at, ok = b, a, true
			}
		}
	}
	f := Final{Path: w.Text, Program: "make", At: w.At, Dir: dir, Env: env, Steps: steps}
	if !ok {
		f.Reason = p + " makes " + target + " with what is not followed"
		return f, true
	}
	line, err := Parse(body, at)
	if err != nil {
		f.Reason = "the recipe of " + target + " in " + p + " could not be read"
		return f, true
	}
	for _, n := range names { // what stands on the command line is in the environment of all
		env = append(env[:len(env):len(env)], Assign{Name: n, Value: given[n], At: w.At})
	}
	c.Dir = dir
	steps = append(steps[:len(steps):len(steps)], value.Step{At: at, Note: "the recipe of " + target})
	f = follow(line, c, env, steps, depth+1)
	f.Holds = &Hold{"runner", "make", w.At}
	return f, true
}

// script is what the shell is given for a target: the variables of the file, and the
// recipes.
func (m *makefile) script(target string, given map[string]*value.Value) (text string, at place.Span, ok bool) {
	var body strings.Builder
	for _, n := range m.order {
		if v := m.vars[n]; !v.unknown && given[n] == nil {
			text, ok := m.expand(v.text, given, "", nil, 0)
			if !ok {
				continue
			}
			if v.unset && m.some {
				continue
			}
			if v.unset {
				text = "${" + n + "-" + text + "}"
			}
			if m.all || m.exports[n] {
				body.WriteString("export ")
			}
			body.WriteString(n + "=\"" + strings.NewReplacer(`"`, `\"`, "`", "\\`").Replace(text) + "\"\n")
		}
	}
	at, ok = m.recipe(target, given, &body, map[string]bool{})
	return body.String(), at, ok
}

// include takes in a file: what it sets, and its rules.
func (m *makefile) include(name, dir string, read func(string) (string, bool), depth int) {
	if strings.Contains(name, "$") && m.with != nil {
		if x, ok := m.expand(name, m.given, "", nil, 0); ok && x != "" && !strings.ContainsAny(x, " \t") {
			name = x
		}
	}
	p, ok := source.Join(dir, name)
	if strings.ContainsAny(name, "$*?") || !ok || depth > 4 {
		m.open, m.some = true, true
		return
	}
	text, ok := read(p)
	if !ok {
		m.open = true
		return
	}
	in := readMake(p, dir, text, read, depth+1, m)
	for _, n := range in.order {
		if _, had := m.vars[n]; had && in.vars[n].unset {
			continue
		} else if !had {
			m.order = append(m.order, n)
		}
		m.vars[n] = in.vars[n]
	}
	for t, r := range in.rules {
		if m.rules[t] == nil {
			m.rules[t] = r
		}
	}
	for n, on := range in.exports {
		m.exports[n] = on
	}
	m.all, m.open, m.some = m.all || in.all, m.open || in.open, m.some || in.some
	if m.first == "" {
		m.first = in.first
	}
}

// readMake reads the lines of a file of make that runs in a folder.
// Outer is the file that takes it in; nil: none.
func readMake(name, dir, text string, read func(string) (string, bool), depth int, outer *makefile) *makefile {
	m := &makefile{vars: map[string]makeVar{}, rules: map[string]*makeRule{}, exports: map[string]bool{}}
	if outer != nil {
		m.with, m.has, m.given = outer.with, outer.has, outer.given
		if m.with != nil {
			maps.Copy(m.vars, outer.vars)
			m.order = slices.Clone(outer.order)
		}
	}
	var sides []int // of conditions that are decided: 1 holds, 0 does not, -1 nor does what follows
	lines := strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n")
	var now []*makeRule
	under := 0 // conditions that are open
	for i := 0; i < len(lines); i++ {
		line, no := lines[i], i+1
		for strings.HasSuffix(line, "\\") && i+1 < len(lines) {
			i++
			line = line[:len(line)-1] + " " + strings.TrimLeft(lines[i], "\t ")
		}
		if strings.HasPrefix(line, "\t") {
			if slices.ContainsFunc(sides, func(s int) bool { return s != 1 }) {
				continue
			}
			for _, r := range now {
				if len(r.lines) == 0 {
					r.at = place.Span{File: name, Line: no, Col: 2, EndLine: no, EndCol: len(lines[no-1]) + 1}
				}
				r.lines = append(r.lines, strings.TrimSpace(line))
			}
			continue
		}
		if h := strings.IndexByte(line, '#'); h >= 0 {
			line = line[:h]
		}
		line = strings.TrimSpace(line)
		word, rest, _ := strings.Cut(line, " ")
		if m.with != nil {
			if done, ok := m.decides(word, rest, &sides); !ok {
				m.undecided = true
			} else if done {
				continue
			}
		}
		switch word {
		case "":
			continue
		case "ifeq", "ifneq", "ifdef", "ifndef", "define":
			under++
			continue
		case "endif", "endef":
			under--
			continue
		case "include", "-include", "sinclude":
			for _, f := range strings.Fields(rest) {
				m.include(f, dir, read, depth)
			}
			continue
		case "else", "unexport", "vpath":
			continue
		case "export", "override":
			exported := word == "export"
			line = strings.TrimSpace(rest)
			if exported && line == "" {
				m.all = true
				continue
			}
			if !strings.Contains(line, "=") {
				for _, n := range strings.Fields(line) {
					m.exports[n] = exported
				}
				continue
			}
			n, _, _ := strings.Cut(line, "=")
			m.exports[strings.TrimRight(n, " ?:+")] = exported
		}
		eq, colon := strings.IndexByte(line, '='), strings.IndexByte(line, ':')
		if eq >= 0 && (colon < 0 || colon > eq || strings.HasPrefix(strings.TrimLeft(line[colon:], ":"), "=")) {
			n := strings.TrimSpace(strings.TrimRight(line[:eq], "?:+!"))
			op := strings.TrimSpace(line[len(strings.TrimRight(line[:eq], "?:+!")):eq])
			v := makeVar{text: strings.TrimSpace(line[eq+1:]), unset: op == "?", unknown: under > 0 || op == "!"}
			if strings.ContainsAny(n, " $") {
				continue
			}
			old, had := m.vars[n]
			switch {
			case op == "?" && had:
				continue
			case op == "+" && had:
				v.text, v.unset, v.unknown = old.text+" "+v.text, old.unset, v.unknown || old.unknown
			case under > 0 && had:
				v.unknown = true
			}
			if !had {
				m.order = append(m.order, n)
			}
			m.vars[n] = v
			now = nil
			continue
		}
		if colon < 0 {
			now = nil
			continue
		}
		now = nil
		needs, inline, one := strings.Cut(strings.TrimLeft(line[colon:], ":"), ";")
		needs, _, _ = strings.Cut(needs, "|")
		for _, t := range strings.Fields(line[:colon]) {
			if strings.HasPrefix(t, ".") && !strings.Contains(t, "/") {
				continue
			}
			r := m.rules[t]
			if r == nil {
				r = &makeRule{at: place.Span{File: name, Line: no, Col: 1, EndLine: no, EndCol: len(lines[no-1]) + 1}}
				m.rules[t] = r
			}
			if m.first == "" && !strings.Contains(t, "%") {
				m.first = t
			}
			r.needs = append(r.needs, strings.Fields(needs)...)
			if one {
				r.lines = append(r.lines, strings.TrimSpace(inline))
			}
			now = append(now, r)
		}
	}
	if v, ok := m.vars[".DEFAULT_GOAL"]; ok {
		m.first = v.text
	}
	m.order = slices.DeleteFunc(m.order, func(n string) bool { return strings.HasPrefix(n, ".") || n == "SHELL" || n == "MAKEFLAGS" })
	return m
}

// recipe writes the commands of a target behind those of what it needs; ok is
// false where make itself computes something in them.
func (m *makefile) recipe(target string, given map[string]*value.Value, to *strings.Builder, seen map[string]bool) (at place.Span, ok bool) {
	r := m.rules[target]
	if r == nil || seen[target] || len(seen) > 64 {
		return place.Span{}, true
	}
	seen[target] = true
	for _, n := range r.needs {
		if _, ok := m.recipe(n, given, to, seen); !ok {
			return r.at, false
		}
	}
	for _, line := range r.lines {
		line = strings.TrimLeft(line, "@-+ ")
		if strings.HasPrefix(line, "$(") || strings.HasPrefix(line, "${") { // the name of a program is taken as it stands
			if end := strings.IndexAny(line, ")}"); end > 0 {
				if v := m.vars[line[2:end]]; v.unset && !v.unknown && given[line[2:end]] == nil {
					line = v.text + line[end+1:]
				}
			}
		}
		text, ok := m.expand(line, given, target, r.needs, 0)
		if !ok {
			return r.at, false
		}
		if strings.HasPrefix(text, "cd ") { // each line has a shell of its own
			text = "(" + text + ")"
		}
		to.WriteString(text + "\n")
	}
	return r.at, true
}

// expand puts the variables of make into a text: what its file sets stands there,
// what the environment may set is left to the shell.
func (m *makefile) expand(text string, given map[string]*value.Value, target string, needs []string, depth int) (string, bool) {
	if m.work += len(text); depth > 16 || m.work > 16*maxLine {
		return "", false
	}
	var b strings.Builder
	for i := 0; i < len(text); i++ {
		if b.Len() > maxLine {
			return "", false
		}
		if text[i] != '$' || i+1 == len(text) {
			b.WriteByte(text[i])
			continue
		}
		i++
		name := text[i : i+1]
		switch text[i] {
		case '$':
			b.WriteByte('$')
			continue
		case '(', '{':
			end := closing(text[i:])
			if end < 0 {
				return "", false
			}
			name = text[i+1 : i+end]
			i += end
		}
		if fn, rest, ok := strings.Cut(name, " "); ok && makeFunctions[fn] {
			x, ok := m.function(fn, strings.TrimLeft(rest, " \t"), given, target, needs, depth+1)
			if !ok {
				return "", false
			}
			b.WriteString(x)
			continue
		}
		if of, change, ok := strings.Cut(name, ":"); ok && strings.Contains(change, "=") { // $(NAME:.a=.b)
			from, to, _ := strings.Cut(change, "=")
			if !strings.Contains(from, "%") {
				from, to = "%"+from, "%"+to
			}
			x, ok := m.function("patsubst", from+","+to+",$("+of+")", given, target, needs, depth+1)
			if !ok {
				return "", false
			}
			b.WriteString(x)
			continue
		}
		switch {
		case name == "@" && target != "":
			b.WriteString(target)
		case name == "<" && len(needs) > 0:
			b.WriteString(needs[0])
		case name == "MAKE":
			b.WriteString("make")
		case name == "CURDIR":
			b.WriteString(".")
		case name == "" || strings.Trim(name, "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_") != "":
			return "", false
		default:
			v, set := m.vars[name]
			if m.with != nil { // the environment is known
				x, ok := m.under(name, v, set, given, depth)
				if !ok {
					return "", false
				}
				b.WriteString(x)
				continue
			}
			switch {
			case !set && m.open && given[name] == nil, v.unset && m.some && given[name] == nil:
				return "", false
			case given[name] != nil || !set || v.unset && !v.unknown:
				b.WriteString("${" + name + "}")
			case v.unknown:
				return "", false
			default:
				x, ok := m.expand(v.text, given, "", nil, depth+1)
				if !ok {
					return "", false
				}
				b.WriteString(x)
			}
		}
	}
	return b.String(), true
}
