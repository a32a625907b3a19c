package trace

import (
	"fmt"
	"strings"
)

// The package flag of Go (package documentation, Go 1.26): flags hold their defaults
// until a set of them parses its words.

// goFlagSet is a set of flags: what is left of the words that it has parsed.
type goFlagSet struct {
	rest   []any
	parsed bool
}

// goFlagTypes are the types of flags that a call defines, by its name without Var.
var goFlagTypes = map[string]func() *goType{
	"String": func() *goType { return tString }, "Bool": func() *goType { return tBool }, "Int": func() *goType { return tInt },
	"Int64": func() *goType { return goBasic["int64"] }, "Uint": func() *goType { return goBasic["uint"] }, "Uint64": func() *goType { return goBasic["uint64"] },
	"Float64": func() *goType { return tFloat }, "Duration": func() *goType { return tLength },
}

// goStdFlag is what the functions of the package, and the methods of a set, do; done
// is false for all other calls.
func (m *machine) goStdFlag(f *opaque, args []goValue, at spot, s *goScope) (_ []goValue, done bool, err error) {
	i := strings.LastIndexByte(f.path, '.')
	if i < 0 {
		return nil, false, nil
	}
	key, name := "", f.path[i+1:]
	switch f.path[:i] {
	case "flag", "flag.CommandLine":
		key = "flag"
	case "flag.NewFlagSet()":
		if f.recv == nil {
			return nil, false, nil
		}
		key = fmt.Sprintf("flag %p", f.recv)
	default:
		return nil, false, nil
	}
	if m.goSets == nil {
		m.goSets = map[string]*goFlagSet{}
	}
	set := m.goSets[key]
	if set == nil {
		set = &goFlagSet{}
		m.goSets[key] = set
	}
	define := func(kind string, name goValue, usage goValue, def any, cell *goCell, fn goValue) error {
		n, ok := name.v.(string)
		if !ok {
			return giveUp("a flag whose name is not known")
		}
		text, _ := usage.v.(string)
		m.goDefined(key, n, kind, text, def, cell, fn)
		m.goFlagOf(key, n).given = false
		return nil
	}
	arg := func(i int) goValue {
		if i < len(args) {
			return args[i]
		}
		return goValue{}
	}
	if t := goFlagTypes[name]; t != nil && len(args) == 3 {
		c := &goCell{v: goValue{args[1].v, t()}, t: t()}
		return []goValue{{c, pointerTo(t())}}, true, define(name, args[0], args[2], args[1].v, c, goValue{})
	}
	if kind, ok := strings.CutSuffix(name, "Var"); ok && goFlagTypes[kind] != nil && len(args) == 4 {
		c, ok := args[0].v.(*goCell)
		if !ok {
			return nil, true, giveUp("where a flag is put")
		}
		c.v = goValue{args[2].v, goFlagTypes[kind]()}
		return nil, true, define(kind, args[1], args[3], args[2].v, c, goValue{})
	}
	one := []goValue{{nil, nil}}
	switch name {
	case "Var":
		fn, _, err := m.goMember(arg(0), nil, "Set", nil, nil)
		if err != nil || len(args) != 3 {
			return nil, true, giveUp("what takes a flag")
		}
		kind := "Var"
		if _, _, err := m.goMember(arg(0), nil, "IsBoolFlag", nil, nil); err == nil {
			kind = "BoolFunc"
		}
		return nil, true, define(kind, args[1], args[2], nil, nil, fn)
	case "Func", "BoolFunc":
		if len(args) != 3 {
			return nil, false, nil
		}
		return nil, true, define(name, args[0], args[1], nil, nil, args[2])
	case "TextVar":
		return nil, true, giveUp("a flag of a text that is unmarshalled")
	case "Parse":
		words := m.argv()[1:]
		how := "flag.ExitOnError"
		if key != "flag" {
			l, ok := arg(0).v.(*goList)
			if !ok {
				return nil, true, undecided("the words of a set of flags")
			}
			words = nil
			for _, c := range l.a {
				words = append(words, c.v.v)
			}
			if len(f.recv.args) > 1 {
				if o, ok := f.recv.args[1].(*opaque); ok {
					how = o.path
				}
			}
		}
		fault, err := m.goParseFlags(key, set, words, at, s)
		if err != nil || fault == "" {
			return one, true, err
		}
		switch how {
		case "flag.ExitOnError":
			return nil, true, &exit{}
		case "flag.PanicOnError":
			return nil, true, &goPanic{v: goValue{fault, tString}}
		}
		return []goValue{{&goFault{msg: fault}, tFault}}, true, nil
	case "Name":
		if f.recv != nil && key != "flag" {
			if name, ok := first(f.recv.args).(string); ok {
				return []goValue{{name, tString}}, true, nil
			}
		}
	case "Args":
		return []goValue{m.goFrom(&list{items: set.rest})}, true, nil
	case "NArg":
		return []goValue{{integer(len(set.rest)), tInt}}, true, nil
	case "Arg":
		if n, ok := arg(0).v.(integer); ok && n >= 0 && int(n) < len(set.rest) {
			return []goValue{{set.rest[n], tString}}, true, nil
		}
		return []goValue{{"", tString}}, true, nil
	case "Parsed":
		return []goValue{{set.parsed, tBool}}, true, nil
	case "NFlag":
		n := 0
		for _, x := range m.goFlags {
			if x.in == key && x.given {
				n++
			}
		}
		return []goValue{{integer(n), tInt}}, true, nil
	case "Set", "Lookup", "Visit", "VisitAll":
		return m.goFlagsOf(key, name, args, at, s)
	case "PrintDefaults", "SetOutput", "Usage", "Init":
		return nil, true, nil
	}
	return nil, false, nil
}

// goParseFlags reads the words of a set; fault says what is wrong with them.
func (m *machine) goParseFlags(key string, set *goFlagSet, words []any, at spot, s *goScope) (fault string, err error) {
	set.parsed = true
	for len(words) > 0 {
		w, ok := words[0].(string)
		if !ok {
			return "", undecided("the arguments of the command line")
		}
		if len(w) < 2 || w[0] != '-' {
			break
		}
		words = words[1:]
		if w == "--" {
			break
		}
		name, v, has := strings.Cut(strings.TrimPrefix(w[1:], "-"), "=")
		if name == "" || name[0] == '-' {
			return "bad flag syntax: " + w, nil
		}
		x := m.goFlagOf(key, name)
		switch {
		case x == nil:
			return "flag provided but not defined: -" + name, nil
		case has:
		case x.kind == "Bool" || x.kind == "BoolFunc":
			v = "true"
		case len(words) == 0:
			return "flag needs an argument: -" + name, nil
		default:
			if v, ok = words[0].(string); !ok {
				if x.cell == nil {
					return "", undecided("the arguments of the command line")
				}
				x.given, x.cell.v.v = true, words[0]
				words = words[1:]
				continue
			}
			words = words[1:]
		}
		out, err := m.goSetFlag(x, goValue{v, tString}, at, s)
		if err != nil {
			return "", err
		}
		if len(out) == 1 && out[0].v != nil {
			if o, ok := out[0].v.(*opaque); ok && !o.certain() {
				return "", undecided("whether the flag %s takes what it is given", name)
			}
			return "invalid value for the flag -" + name, nil
		}
	}
	set.rest = words
	return "", nil
}
