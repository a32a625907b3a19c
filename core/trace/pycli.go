package trace

import (
	"strings"

	"ubique/core/code"
)

// Libraries of Python that read the command line by other means than argparse and click:
// Fire (0.7, "The Python Fire Guide"), docopt (0.6, "Usage pattern format"), and
// ConfigArgParse (1.7).

// pyFire runs what the words of the command line name of a function, a class or an object.
func (m *machine) pyFire(component any, at spot) (any, error) {
	var words []string
	for _, a := range m.argv()[1:] {
		t, ok := a.(string)
		if !ok {
			return nil, undecided("a word of the command line")
		}
		if t == "--" {
			break
		}
		words = append(words, t)
	}
	now := component
	for turn := 0; ; turn++ {
		if turn > 12 {
			return nil, giveUp("a command line with too many parts")
		}
		switch f := now.(type) {
		case *function:
			args, keys, rest, ok, err := m.pyFireArgs(f.node, f.this != nil && f.this != any(undefined), words)
			if err != nil {
				return nil, err
			}
			if !ok {
				return nil, &exit{}
			}
			v, err := m.call(f, undefined, args, keys, at)
			if err != nil {
				return nil, err
			}
			if now, words = v, rest; len(rest) == 0 {
				return v, nil
			}
		case *class:
			var init *code.Node
			if c, _ := classKey(f, "__init__", false); c != nil {
				if made, ok := c.(*function); ok {
					init = made.node
				}
			}
			args, keys, rest, ok, err := m.pyFireArgs(init, true, words)
			if err != nil {
				return nil, err
			}
			if !ok {
				return nil, &exit{}
			}
			v, err := m.create(f, args, keys, at)
			if err != nil {
				return nil, err
			}
			if now, words = v, rest; len(rest) == 0 {
				return v, nil
			}
		case *object:
			if len(words) == 0 {
				return f, nil // its commands are shown
			}
			name := strings.ReplaceAll(words[0], "-", "_")
			var v any
			if c := f.cells[name]; c != nil {
				v = c.v
			} else if c := f.cells[words[0]]; c != nil {
				v = c.v
			} else if c := m.method(f, name); c != nil {
				w := *c
				w.this, w.bound = f, true
				v = &w
			} else {
				return nil, &exit{}
			}
			now, words = v, words[1:]
		default:
			if len(words) > 0 {
				return nil, giveUp("words of the command line for what is no command")
			}
			return now, nil
		}
	}
}

// pyFireArgs takes the words for the parameters of a function: flags by their names, the
// rest by their places; ok is false where one that must be there is not.
func (m *machine) pyFireArgs(fn *code.Node, method bool, words []string) (args []any, keys map[string]any, rest []string, ok bool, err error) {
	keys = map[string]any{}
	if fn == nil {
		return nil, nil, words, true, nil
	}
	params := paramsOf(fn.Kid(0))
	if method && len(params) > 0 {
		params = params[1:]
	}
	literal := func(t string) any {
		if v, err := m.pyLiteral(t); err == nil {
			return v
		}
		return t
	}
	named := func(name string) *code.Node {
		name = strings.ReplaceAll(name, "-", "_")
		for _, p := range params {
			if p.Name == name && p.Flag&(code.Rest|code.Star) == 0 {
				return p
			}
		}
		if len(name) == 1 { // its first letter, where no other has that
			var only *code.Node
			for _, p := range params {
				if strings.HasPrefix(p.Name, name) {
					if only != nil {
						return nil
					}
					only = p
				}
			}
			return only
		}
		return nil
	}
	var placed []string
	for i := 0; i < len(words); i++ {
		w := words[i]
		if !strings.HasPrefix(w, "-") || len(w) > 1 && w[1] >= '0' && w[1] <= '9' {
			placed = append(placed, w)
			continue
		}
		name, with, has := strings.Cut(strings.TrimLeft(w, "-"), "=")
		p, no := named(name), false
		if p == nil && !has && strings.HasPrefix(name, "no") {
			p, no = named(name[2:]), true
		}
		switch {
		case p == nil:
			return nil, nil, nil, false, nil
		case has:
			keys[p.Name] = literal(with)
		case no:
			keys[p.Name] = false
		case i+1 == len(words) || strings.HasPrefix(words[i+1], "-"):
			keys[p.Name] = true
		default:
			i++
			keys[p.Name] = literal(words[i])
		}
	}
	for _, p := range params {
		if p.Flag&(code.Rest|code.Star) != 0 {
			return nil, nil, nil, false, giveUp("a function that takes any words")
		}
		if _, given := keys[p.Name]; given {
			continue
		}
		switch {
		case len(placed) > 0:
			keys[p.Name] = literal(placed[0])
			placed = placed[1:]
		case p.Kid(0) == nil:
			return nil, nil, nil, false, nil
		}
	}
	return nil, keys, placed, true, nil
}

// docOption is an option that a usage text describes.
type docOption struct {
	short, long string
	takes       bool
	def         any
}

func (o *docOption) name() string {
	if o.long != "" {
		return o.long
	}
	return o.short
}

// docElement is a word of a usage pattern.
type docElement struct {
	text     string
	command  bool
	must     bool
	option   *docOption
	repeated bool
}

// pyDocopt reads the words of the command line as a usage text says.
func (m *machine) pyDocopt(doc string, words []string) (any, error) {
	var options []*docOption
	find := func(name string) *docOption {
		for _, o := range options {
			if o.short == name || o.long == name {
				return o
			}
		}
		return nil
	}
	lines := strings.Split(doc, "\n")
	var usage []string
	in := false
	for _, l := range lines {
		t := strings.TrimSpace(l)
		if i := strings.Index(strings.ToLower(t), "usage:"); i >= 0 && len(usage) == 0 {
			in = true
			t = strings.TrimSpace(t[i+6:])
		} else if in && t == "" && len(usage) > 0 {
			in = false
		}
		if in {
			if t != "" {
				usage = append(usage, t)
			}
			continue
		}
		if !strings.HasPrefix(t, "-") {
			continue
		}
		o := &docOption{def: false}
		head, desc, _ := strings.Cut(t, "  ")
		for _, w := range strings.FieldsFunc(head, func(r rune) bool { return r == ' ' || r == ',' || r == '=' }) {
			switch {
			case strings.HasPrefix(w, "--"):
				o.long = w
			case strings.HasPrefix(w, "-"):
				o.short = w
			default:
				o.takes, o.def = true, nil
			}
		}
		if i := strings.Index(strings.ToLower(desc), "[default: "); i >= 0 && o.takes {
			if end := strings.IndexByte(desc[i:], ']'); end > 0 {
				o.def = desc[i+10 : i+end]
			}
		}
		options = append(options, o)
	}
	if len(usage) == 0 {
		return nil, giveUp("a usage text that is not read")
	}
	program, _, _ := strings.Cut(usage[0], " ")
	var patterns []string
	for _, u := range usage {
		if u == program || strings.HasPrefix(u, program+" ") {
			patterns = append(patterns, strings.TrimPrefix(u, program))
		} else if n := len(patterns); n > 0 {
			patterns[n-1] += " " + u
		}
	}
	var lists [][]docElement
	out := newObject()
	out.dict = true
	for _, p := range patterns {
		depth := 0
		var list []docElement
		for _, w := range strings.Fields(strings.NewReplacer("[", " [ ", "]", " ] ", "(", " ( ", ")", " ) ", "|", " | ", "...", " ... ").Replace(p)) {
			switch {
			case w == "[":
				depth++
			case w == "]":
				depth--
			case w == "(" || w == ")":
			case w == "|" || w == "...":
				return nil, giveUp("a usage text with %s", w)
			case w == "options" && depth > 0:
			case strings.HasPrefix(w, "-") && w != "-" && w != "--":
				name, arg, has := strings.Cut(w, "=")
				o := find(name)
				if o == nil {
					o = &docOption{def: false}
					if strings.HasPrefix(name, "--") {
						o.long = name
					} else {
						o.short = name
					}
					if has && arg != "" {
						o.takes, o.def = true, nil
					}
					options = append(options, o)
				}
				list = append(list, docElement{option: o, must: depth == 0})
			case strings.HasPrefix(w, "<") || w == strings.ToUpper(w) && w != strings.ToLower(w):
				if n := len(list); n > 0 && list[n-1].option != nil && list[n-1].option.takes && !strings.Contains(p, "="+w) { // -p PORT
					continue
				}
				list = append(list, docElement{text: w, must: depth == 0})
				out.set(w, nil)
			default:
				list = append(list, docElement{text: w, command: true, must: depth == 0})
				out.set(w, false)
			}
		}
		lists = append(lists, list)
	}
	given := map[*docOption]any{}
	var free []string
	for i := 0; i < len(words); i++ {
		w := words[i]
		if w == "--" {
			free = append(free, words[i+1:]...)
			break
		}
		if !strings.HasPrefix(w, "-") || w == "-" {
			free = append(free, w)
			continue
		}
		name, with, has := strings.Cut(w, "=")
		var o *docOption
		if strings.HasPrefix(w, "--") {
			for _, x := range options {
				if x.long == name {
					o = x
					break
				}
				if x.long != "" && strings.HasPrefix(x.long, name) {
					if o != nil {
						return nil, &exit{}
					}
					o = x
				}
			}
		} else if o = find(w[:2]); o != nil && len(w) > 2 {
			if !o.takes {
				return nil, giveUp("several options in one word")
			}
			with, has = w[2:], true
		}
		switch {
		case o == nil:
			return nil, &exit{}
		case o.takes && !has:
			if i++; i == len(words) {
				return nil, &exit{}
			}
			with = words[i]
			fallthrough
		case o.takes:
			given[o] = with
		case has:
			return nil, &exit{}
		default:
			given[o] = true
		}
	}
	for _, o := range options {
		out.set(o.name(), o.def)
		if v, ok := given[o]; ok {
			out.set(o.name(), v)
		}
	}
	for _, list := range lists {
		left, set, fits := free, map[string]any{}, true
		for _, e := range list {
			switch {
			case e.option != nil:
				_, ok := given[e.option]
				fits = fits && (ok || !e.must)
			case e.command:
				if len(left) > 0 && left[0] == e.text {
					set[e.text], left = true, left[1:]
				} else if e.must {
					fits = false
				}
			case len(left) > 0:
				set[e.text], left = left[0], left[1:]
			case e.must:
				fits = false
			}
		}
		if fits && len(left) == 0 {
			for k, v := range set {
				out.set(k, v)
			}
			return out, nil
		}
	}
	return nil, &exit{}
}
