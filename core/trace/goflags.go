package trace

import (
	"slices"
	"strconv"
	"strings"
	"time"
)

// goFlagged is a flag that a program has defined (package documentation of flag, Go
// 1.26: type Flag); where a program takes the text itself, set does it.
type goFlagged struct {
	in    string // the set of flags, as the program names it
	name  string
	kind  string
	usage string
	def   string
	cell  *goCell
	set   goValue
	given bool // on the command line, or by Set
}

// goFlagOf is the flag of a name in a set, and its place in the list.
func (m *machine) goFlagOf(in, name string) *goFlagged {
	for _, f := range m.goFlags {
		if f.in == in && f.name == name {
			return f
		}
	}
	return nil
}

// goDefined notes a flag that was defined, with what it holds.
func (m *machine) goDefined(in, name, kind, usage string, def any, cell *goCell, set goValue) {
	f := m.goFlagOf(in, name)
	if f == nil {
		f = &goFlagged{in: in, name: name}
		m.goFlags = append(m.goFlags, f)
	}
	f.kind, f.usage, f.cell, f.set = strings.TrimSuffix(kind, "P"), usage, cell, set
	if f.def = ""; def != nil {
		f.def = show(def)
	}
	for _, w := range m.argv()[1:] {
		s, _ := w.(string)
		word, _, _ := strings.Cut(s, "=")
		bare := strings.TrimPrefix(strings.TrimPrefix(word, "-"), "-")
		f.given = f.given || bare != word && bare == name
	}
}

// goFlagsMethod is what a set of flags does with those that are defined: Set, Lookup,
// Visit and VisitAll; done is false for any other call.
func (m *machine) goFlagsMethod(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	i := strings.LastIndexByte(f.path, '.')
	if i < 0 || len(args) == 0 || len(m.goFlags) == 0 {
		return nil, false, nil
	}
	in, name := f.path[:i], f.path[i+1:]
	if in != "github.com/spf13/pflag" && in != "github.com/spf13/pflag.NewFlagSet()" && in != "github.com/spf13/pflag.CommandLine" {
		if name == "Lookup" && (strings.HasSuffix(in, "Flags()") || strings.HasSuffix(in, ".Root()")) { // of a command of cobra
			for _, x := range m.goFlags {
				if args[0].v == any(x.name) {
					return []goValue{{x, nil}}, true, nil
				}
			}
		}
		return nil, false, nil
	}
	return m.goFlagsOf(strings.TrimSuffix(in, ".CommandLine"), name, args, at, s)
}

// goFlagsOf is what a set of flags does with those of a name.
func (m *machine) goFlagsOf(in, name string, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	switch name {
	case "Set":
		key, ok := args[0].v.(string)
		if !ok || len(args) != 2 {
			return nil, true, giveUp("which flag is set")
		}
		x := m.goFlagOf(in, key)
		if x == nil {
			return []goValue{{&goFault{msg: "no such flag -" + key}, tFault}}, true, nil
		}
		list, err = m.goSetFlag(x, args[1], at, s)
		return list, true, err
	case "Lookup":
		key, ok := args[0].v.(string)
		if !ok {
			return nil, true, giveUp("which flag is looked up")
		}
		if x := m.goFlagOf(in, key); x != nil {
			return []goValue{{x, nil}}, true, nil
		}
		return []goValue{{nil, nil}}, true, nil
	case "Visit", "VisitAll":
		all := slices.Clone(m.goFlags)
		slices.SortFunc(all, func(a, b *goFlagged) int { return strings.Compare(a.name, b.name) })
		for _, x := range all {
			if x.in != in || name == "Visit" && !x.given {
				continue
			}
			if _, err := m.goApply(args[0], []goValue{{x, nil}}, at, s); err != nil {
				return nil, true, err
			}
		}
		return nil, true, nil
	}
	return nil, false, nil
}

// goSetFlag gives a flag a text.
func (m *machine) goSetFlag(x *goFlagged, v goValue, at spot, s *goScope) ([]goValue, error) {
	x.given = true
	if x.set.v != nil {
		return m.goApply(x.set, []goValue{v}, at, s)
	}
	if x.cell == nil {
		return nil, giveUp("what the flag %s is set to", x.name)
	}
	text, ok := v.v.(string)
	if !ok {
		x.cell.v = goValue{dontKnow("what a flag is set to"), x.cell.t}
		return []goValue{{nil, nil}}, nil
	}
	bad := []goValue{{&goFault{msg: "invalid value " + strconv.Quote(text) + " for flag -" + x.name + ": parse error"}, tFault}}
	var w any = text
	switch x.kind {
	case "String":
	case "Float64":
		n, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return bad, nil
		}
		w = n
	case "Duration":
		d, err := time.ParseDuration(text)
		if err != nil {
			return bad, nil
		}
		w = integer(d)
	case "Uint", "Uint64":
		n, err := strconv.ParseUint(text, 0, 64)
		if err != nil {
			return bad, nil
		}
		w = integer(n)
	case "Bool":
		b, err := strconv.ParseBool(text)
		if err != nil {
			return bad, nil
		}
		w = b
	default:
		n, err := strconv.ParseInt(text, 0, 64)
		if err != nil {
			return bad, nil
		}
		w = integer(n)
	}
	t := x.cell.v.t
	if t == nil {
		t = x.cell.t
	}
	x.cell.v = goValue{w, t}
	return []goValue{{nil, nil}}, nil
}

// goFlagMember is a field of a flag, or what its value does.
func (m *machine) goFlagMember(x *goFlagged, name string, s *goScope) (goValue, error) {
	switch name {
	case "Name":
		return goValue{x.name, tString}, nil
	case "Usage":
		return goValue{x.usage, tString}, nil
	case "DefValue":
		return goValue{x.def, tString}, nil
	case "Changed":
		return goValue{x.given, tBool}, nil
	case "Value":
		return goValue{x, nil}, nil
	case "Set":
		return goValue{&goClosure{name: name, native: func(m *machine, args []goValue, at spot) ([]goValue, error) {
			if len(args) != 1 {
				return nil, giveUp("what the flag %s is set to", x.name)
			}
			return m.goSetFlag(x, args[0], at, s)
		}}, nil}, nil
	case "String":
		return goValue{&goClosure{name: name, native: func(*machine, []goValue, spot) ([]goValue, error) {
			if x.cell == nil || !known(x.cell.v.v) {
				return []goValue{{dontKnow("what the flag " + x.name + " holds"), tString}}, nil
			}
			return []goValue{{show(x.cell.v.v), tString}}, nil
		}}, nil}, nil
	}
	return goValue{}, giveUp("%s of a flag", name)
}
