package trace

import (
	"reflect"
	"strconv"
	"strings"
	"unicode"
)

// What kong makes of a structure and the command line (documentation of
// alecthomas/kong 1.12, "Command handling", "Supported tags").

// kongFlag is a flag or an argument of a command.
type kongFlag struct {
	name, short, def string
	env              []string
	has, required    bool
	given            bool
	c                *goCell
	t                *goType
}

// kongNode is a command: its flags, its arguments, the commands in it.
type kongNode struct {
	name  string
	c     *goCell
	flags []*kongFlag
	args  []*kongFlag
	subs  []*kongNode
	def   bool
}

// goKong parses the command line into a structure: it gives the commands that were
// chosen, the outer ones first.
func (m *machine) goKong(into goValue, s *goScope) ([]*kongNode, error) {
	c, ok := into.v.(*goCell)
	if !ok || s == nil {
		return nil, giveUp("what kong puts into a variable")
	}
	top := &kongNode{c: c}
	if err := m.kongRead(top, c, "", s, 0); err != nil {
		return nil, err
	}
	path := []*kongNode{top}
	flag := func(test func(*kongFlag) bool) *kongFlag {
		for _, n := range path {
			for _, f := range n.flags {
				if test(f) {
					return f
				}
			}
		}
		return nil
	}
	words := m.argv()[1:]
	next, only := 0, false
	for i := 0; i < len(words); i++ {
		w, ok := words[i].(string)
		if !ok {
			return nil, giveUp("the command line")
		}
		here := path[len(path)-1]
		switch {
		case w == "--" && !only:
			only = true
		case strings.HasPrefix(w, "-") && len(w) > 1 && !only:
			name, text, has := strings.Cut(strings.TrimLeft(w, "-"), "=")
			long := strings.HasPrefix(w, "--")
			f := flag(func(f *kongFlag) bool { return long && f.name == name || !long && f.short == name })
			off := false
			if f == nil && long && strings.HasPrefix(name, "no-") {
				f = flag(func(f *kongFlag) bool { return f.name == name[3:] && f.t.is(goBool) })
				off = f != nil
			}
			if f == nil {
				return nil, &exit{}
			}
			switch {
			case off:
				text = "false"
			case !has && f.t.is(goBool):
				text = "true"
			case !has:
				if i+1 >= len(words) {
					return nil, &exit{}
				}
				i++
				if text, ok = words[i].(string); !ok {
					return nil, giveUp("the command line")
				}
			}
			f.given = true
			if err := m.kongSet(f, text); err != nil {
				return nil, err
			}
		default:
			var chosen *kongNode
			for _, sub := range here.subs {
				if sub.name == w && !only {
					chosen = sub
				}
			}
			if chosen != nil {
				path, next = append(path, chosen), 0
				continue
			}
			if next >= len(here.args) {
				return nil, &exit{}
			}
			a := here.args[next]
			if a.given = true; !a.t.is(goSlice) {
				next++
			}
			if err := m.kongSet(a, w); err != nil {
				return nil, err
			}
		}
	}
	for here := path[len(path)-1]; len(here.subs) > 0; here = path[len(path)-1] {
		var def *kongNode
		for _, sub := range here.subs {
			if sub.def {
				def = sub
			}
		}
		if def == nil {
			return nil, &exit{} // a command is expected
		}
		path = append(path, def)
	}
	for _, n := range path {
		for _, f := range append(append([]*kongFlag(nil), n.flags...), n.args...) {
			if f.given {
				continue
			}
			text, set := f.def, f.has
			for _, name := range f.env {
				if v, ok := m.lookup(name, s.file.spot(nil)); ok {
					text, set = v, true
					break
				}
			}
			if set {
				if err := m.kongSet(f, text); err != nil {
					return nil, err
				}
			} else if f.required {
				return nil, &exit{}
			}
		}
	}
	return path, nil
}

// kongRead reads the flags, the arguments and the commands of a structure.
func (m *machine) kongRead(n *kongNode, c *goCell, prefix string, s *goScope, depth int) error {
	r, ok := c.v.v.(*goRecord)
	u := c.v.t.under()
	if !ok || u == nil || len(u.fields) != len(r.fields) || depth > 8 {
		return giveUp("what kong puts into a variable")
	}
	for i, f := range u.fields {
		if !unicode.IsUpper([]rune(f.name)[0]) {
			continue
		}
		tag := reflect.StructTag(f.tag)
		get := func(keys ...string) (string, bool) {
			for _, k := range keys {
				if v, ok := tag.Lookup(k); ok {
					return v, true
				}
			}
			// The tag may be bare words in one: kong:"cmd,help='…'".
			for _, part := range strings.Split(tag.Get("kong"), ",") {
				k, v, _ := strings.Cut(part, "=")
				for _, want := range keys {
					if k == want && k != "" {
						return strings.Trim(v, "'"), true
					}
				}
			}
			return "", false
		}
		if tag.Get("kong") == "-" {
			continue
		}
		at := r.fields[i]
		name, ok := get("name")
		if !ok {
			name = kebab(f.name)
		}
		if _, cmd := get("cmd", "command"); cmd {
			if f.t.kind == goPointer {
				return giveUp("a command of kong that is a pointer")
			}
			sub := &kongNode{name: name, c: at}
			if d, ok := get("default"); ok && (d == "1" || d == "true" || d == "withargs") {
				sub.def = true
			}
			if err := m.kongRead(sub, at, "", s, depth+1); err != nil {
				return err
			}
			n.subs = append(n.subs, sub)
			continue
		}
		_, embed := get("embed")
		if embed || f.embedded {
			p, _ := get("prefix")
			if err := m.kongRead(n, at, prefix+p, s, depth+1); err != nil {
				return err
			}
			continue
		}
		k := &kongFlag{name: prefix + name, c: at, t: f.t}
		k.short, _ = get("short")
		k.def, k.has = get("default")
		if env, ok := get("env"); ok {
			for _, e := range strings.Split(env, ",") {
				k.env = append(k.env, strings.TrimSpace(e))
			}
		}
		_, k.required = get("required")
		if _, arg := get("arg"); arg {
			_, optional := get("optional")
			k.required = !optional && !k.has
			n.args = append(n.args, k)
			continue
		}
		switch f.t.under().kind {
		case goInt, goFloat, goString, goBool, goSlice:
			n.flags = append(n.flags, k)
		case goStruct, goPointer, goOutside, goMap, goInterface:
			if k.has || len(k.env) > 0 {
				return giveUp("a flag of kong of a type that is not followed")
			}
		}
	}
	return nil
}

// kongSet gives a flag what a text says; one that does not fit ends the program.
func (m *machine) kongSet(f *kongFlag, text string) error {
	switch u := f.t.under(); {
	case f.t == tLength:
		return giveUp("a length of time")
	case u.kind == goString:
		f.c.v = goValue{text, f.t}
	case u.kind == goInt:
		n, err := strconv.ParseInt(text, 0, 64)
		if err != nil || wrapped(integer(n), f.t) != integer(n) {
			return &exit{}
		}
		f.c.v = goValue{integer(n), f.t}
	case u.kind == goFloat:
		x, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return &exit{}
		}
		f.c.v = goValue{x, f.t}
	case u.kind == goBool:
		b, err := strconv.ParseBool(text)
		if err != nil {
			return &exit{}
		}
		f.c.v = goValue{b, f.t}
	case u.kind == goSlice && u.elem.same(tString):
		l, ok := f.c.v.v.(*goList)
		if !ok {
			l = &goList{}
		}
		for _, w := range strings.Split(text, ",") {
			l.a = append(l.a, &goCell{v: goValue{w, tString}, t: tString})
		}
		f.c.v = goValue{l, f.t}
	default:
		return giveUp("a flag of kong of a type that is not followed")
	}
	return nil
}

// kebab writes a name of Go as kong does: HTTPPort is http-port.
func kebab(name string) string {
	var b strings.Builder
	r := []rune(name)
	for i, c := range r {
		if unicode.IsUpper(c) && i > 0 && (unicode.IsLower(r[i-1]) || unicode.IsDigit(r[i-1]) || i+1 < len(r) && unicode.IsLower(r[i+1])) {
			b.WriteByte('-')
		}
		b.WriteRune(unicode.ToLower(c))
	}
	return b.String()
}

// kongContext is what kong.Parse gives.
type kongContext struct{ path []*kongNode }

// kongMethod calls a method of it.
func (m *machine) kongMethod(k *kongContext, name string, args []goValue, at spot, s *goScope) ([]goValue, error) {
	switch name {
	case "Command":
		var words []string
		for _, n := range k.path[1:] {
			words = append(words, n.name)
			for _, a := range n.args {
				words = append(words, "<"+a.name+">")
			}
		}
		return []goValue{{strings.Join(words, " "), tString}}, nil
	case "FatalIfErrorf":
		if len(args) > 0 && args[0].v != nil {
			if o, ok := args[0].v.(*opaque); ok && !o.certain() {
				return nil, nil // that it works is what is asked
			}
			return nil, &exit{}
		}
		return nil, nil
	case "Exit":
		return nil, &exit{}
	case "Run":
		for i := len(k.path) - 1; i >= 0; i-- {
			n := k.path[i]
			f := m.goFound(n.c.v, n.c, "Run")
			if f == nil {
				continue
			}
			want := 0
			if f.decl.Params != nil {
				want = f.decl.Params.NumFields()
			}
			if want > len(args) {
				return nil, giveUp("what kong hands to a command")
			}
			out, err := m.goCall(f, args[:want], at)
			if err == nil && len(out) == 0 {
				out = []goValue{{nil, nil}}
			}
			return out, err
		}
		return nil, giveUp("a command of kong without Run")
	}
	return []goValue{{dontKnow("what " + name + " of kong gives"), nil}}, nil
}
