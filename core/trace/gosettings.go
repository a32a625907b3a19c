package trace

import (
	"reflect"
	"strconv"
	"strings"
	"unicode"

	"ubique/core/value"
)

// Further libraries of Go that read settings and command lines: cleanenv (1.5),
// sethvargo/go-envconfig (1.1), jessevdk/go-flags (1.6), kingpin (2.4), koanf (2.1); what
// each does is as its README and its source say, read 2026-11.

// goSettings calls a function of one of them; done is false for any other call.
func (m *machine) goSettings(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	whole := value.Library(f.path)
	i := strings.LastIndexByte(whole, '.')
	if i < 0 {
		return nil, false, nil
	}
	lib, name := whole[:i], whole[i+1:]
	cell := func(n int) *goCell {
		if n < len(args) {
			if c, ok := args[n].v.(*goCell); ok {
				return c
			}
		}
		return nil
	}
	fault := func(bad string) []goValue {
		if bad != "" {
			return []goValue{{&goFault{msg: bad}, tFault}}
		}
		return []goValue{{nil, nil}}
	}
	switch {
	case lib == "github.com/ilyakaznacheev/cleanenv" && (name == "ReadEnv" || name == "UpdateEnv" || name == "ReadConfig"):
		c := cell(len(args) - 1)
		if c == nil {
			return nil, true, giveUp("what cleanenv fills")
		}
		if name == "ReadConfig" {
			if file, ok := args[0].v.(string); !ok || strings.HasSuffix(file, ".env") {
				return nil, true, giveUp("the file that cleanenv reads")
			}
			out, _, err := m.goDecoded(m.readFile(args[0].v), args[1], strings.HasSuffix(args[0].v.(string), ".json"), at, s)
			if err != nil || out[0].v != nil {
				return out, true, err
			}
		}
		bad, err := m.cleanenv(c, "", name == "UpdateEnv", at, s, 0)
		return fault(bad), true, err
	case lib == "github.com/sethvargo/go-envconfig" && name == "Process" && len(args) == 2:
		c := cell(1)
		if c == nil {
			return nil, true, giveUp("what envconfig fills")
		}
		bad, _, err := m.sethvargo(c, "", at, s, 0)
		return fault(bad), true, err
	case lib == "github.com/jessevdk/go-flags" && (name == "Parse" || name == "NewParser" || name == "ParseArgs") && len(args) > 0:
		c := cell(0)
		if c == nil || name == "ParseArgs" {
			return nil, true, giveUp("what go-flags fills")
		}
		if name == "NewParser" {
			return nil, false, nil
		}
		bad, err := m.goFlagsInto(c, at, s)
		return append([]goValue{{&goList{}, &goType{kind: goSlice, elem: tString}}}, fault(bad)...), true, err
	case lib == "github.com/jessevdk/go-flags.NewParser()" && name == "Parse" && f.recv != nil && len(f.recv.args) > 0:
		c, ok := f.recv.args[0].(*goCell)
		if !ok {
			return nil, true, giveUp("what go-flags fills")
		}
		bad, err := m.goFlagsInto(c, at, s)
		return append([]goValue{{&goList{}, &goType{kind: goSlice, elem: tString}}}, fault(bad)...), true, err
	case strings.HasPrefix(whole, "github.com/alecthomas/kingpin.") || strings.HasPrefix(whole, "gopkg.in/alecthomas/kingpin."):
		return m.kingpin(f, name, args, at, s)
	case strings.HasPrefix(whole, "github.com/knadh/koanf.New().") && !strings.Contains(strings.TrimPrefix(whole, "github.com/knadh/koanf.New()."), "("):
		return m.koanf(f, name, args, at, s)
	}
	return nil, false, nil
}

// goFieldsOf lists the fields of a structure that a library sees, each with its tags.
func (m *machine) goFieldsOf(c *goCell, depth int, see func(name string, tag reflect.StructTag, at *goCell, t *goType, embedded bool) error) error {
	r, ok := c.v.v.(*goRecord)
	u := c.v.t.under()
	if !ok || u == nil || len(u.fields) != len(r.fields) || depth > 8 {
		return giveUp("what a library fills")
	}
	for i, f := range u.fields {
		if !f.embedded && !unicode.IsUpper([]rune(f.name)[0]) {
			continue
		}
		if err := see(f.name, reflect.StructTag(f.tag), r.fields[i], f.t, f.embedded); err != nil {
			return err
		}
	}
	return nil
}

// stopped is an error that ends the going through of fields; what is wrong stands beside it.
type stopped struct{}

func (stopped) Error() string { return "stopped" }

// goBlank reports whether a variable holds the zero of its type.
func goBlank(c *goCell) bool {
	switch v := c.v.v.(type) {
	case nil:
		return true
	case string:
		return v == ""
	case integer:
		return v == 0
	case bool:
		return !v
	case float64:
		return v == 0
	case *goList:
		return v == nil || len(v.a) == 0
	}
	return false
}

// cleanenv fills a structure from the environment; bad says what is wrong with that.
func (m *machine) cleanenv(c *goCell, prefix string, update bool, at spot, s *goScope, depth int) (bad string, err error) {
	err = m.goFieldsOf(c, depth, func(name string, tag reflect.StructTag, to *goCell, t *goType, _ bool) error {
		if u := t.under(); u != nil && u.kind == goStruct && t != tLength && !m.goDecodesItself(t) {
			var e error
			if bad, e = m.cleanenv(to, prefix+tag.Get("env-prefix"), update, at, s, depth+1); e == nil && bad != "" {
				e = stopped{}
			}
			return e
		} else if u != nil && u.kind == goPointer {
			return giveUp("a field of cleanenv that is a pointer")
		}
		text, set := "", false
		if list, ok := tag.Lookup("env"); ok {
			for _, key := range strings.Split(list, ",") {
				if text, set = m.lookup(prefix+strings.TrimSpace(key), at); set {
					break
				}
			}
		}
		_, changes := tag.Lookup("env-upd")
		if update && !changes {
			return nil
		}
		if !set && tag.Get("env-required") == "true" && goBlank(to) {
			bad = "field " + name + " is required but the value is not provided"
			return stopped{}
		}
		if def, ok := tag.Lookup("env-default"); ok && !set && goBlank(to) {
			text, set = def, true
		}
		if !set {
			return nil
		}
		sep := tag.Get("env-separator")
		if sep == "" {
			sep = ","
		}
		fit, e := m.goSetText(to, t, text, sep, 0)
		if e == nil && !fit {
			bad, e = "parsing field "+name, stopped{}
		}
		return e
	})
	if _, ok := err.(stopped); ok {
		err = nil
	}
	return bad, err
}

// sethvargo fills a structure from the environment; some says whether anything was set.
func (m *machine) sethvargo(c *goCell, prefix string, at spot, s *goScope, depth int) (bad string, some bool, err error) {
	err = m.goFieldsOf(c, depth, func(name string, tag reflect.StructTag, to *goCell, t *goType, _ bool) error {
		words := strings.Split(tag.Get("env"), ",")
		key, def, has, must, in, noinit, over := strings.TrimSpace(words[0]), "", false, false, "", false, false
		for i, w := range words[1:] {
			w = strings.TrimLeft(w, " ")
			switch {
			case strings.HasPrefix(w, "default="): // the rest of the tag
				def, has = strings.TrimPrefix(strings.TrimLeft(strings.Join(words[i+1:], ","), " "), "default="), true
			case w == "required":
				must = true
			case strings.HasPrefix(w, "prefix="):
				in = strings.TrimPrefix(w, "prefix=")
			case w == "noinit":
				noinit = true
			case w == "overwrite":
				over = true
			case w == "" || strings.HasPrefix(w, "delimiter=") || strings.HasPrefix(w, "separator="):
			case !has:
				return giveUp("an option of envconfig")
			}
			if has {
				break
			}
		}
		below, u := to, t.under()
		if u != nil && u.kind == goPointer {
			if p, ok := to.v.v.(*goCell); ok {
				below, u = p, u.elem.under()
			} else {
				z, e := m.goZero(u.elem, s)
				if e != nil {
					return e
				}
				below = &goCell{v: z, t: u.elem}
				u = u.elem.under()
			}
		}
		if u != nil && u.kind == goStruct && key == "" {
			what, any, e := m.sethvargo(below, prefix+in, at, s, depth+1)
			if e != nil {
				return e
			}
			if bad = what; bad != "" {
				return stopped{}
			}
			if some = some || any; below != to && (any || !noinit) {
				to.v = goValue{below, t}
			}
			return nil
		}
		if key == "" {
			return nil
		}
		if !goBlank(to) && !over {
			return nil
		}
		text, set := m.lookup(prefix+key, at)
		switch {
		case !set && must:
			bad = name + ": missing required value: " + key
			return stopped{}
		case !set && !has:
			return nil
		case !set:
			text = expand(def, func(name string) string { v, _ := m.lookup(name, at); return v })
		}
		some = true
		if text == "" && t.under() != nil && t.under().kind != goString {
			return nil
		}
		fit, e := m.goSetText(to, t, text, ",", 0)
		if e == nil && !fit {
			bad, e = name+": cannot be parsed", stopped{}
		}
		return e
	})
	if _, ok := err.(stopped); ok {
		err = nil
	}
	return bad, some, err
}

// goOption is an option of go-flags or a flag of kingpin.
type goOption struct {
	long, short, env, def string
	has, must, given      bool
	at                    *goCell
	t                     *goType
	command               string // the command that it belongs to
}

// goFlagsInto reads the command line into a structure of go-flags.
func (m *machine) goFlagsInto(c *goCell, at spot, s *goScope) (bad string, err error) {
	var list []*goOption
	var read func(c *goCell, space string, depth int) error
	read = func(c *goCell, space string, depth int) error {
		return m.goFieldsOf(c, depth, func(_ string, tag reflect.StructTag, to *goCell, t *goType, embedded bool) error {
			for _, odd := range []string{"command", "positional-args", "choice", "base", "env-delim", "ini-name", "optional"} {
				if tag.Get(odd) != "" {
					return giveUp("%s of go-flags", odd)
				}
			}
			if u := t.under(); u != nil && u.kind == goStruct && (tag.Get("group") != "" || embedded) {
				if n := tag.Get("namespace"); n != "" {
					space += n + "."
				}
				return read(to, space, depth+1)
			}
			if tag.Get("long") == "" && tag.Get("short") == "" {
				return nil
			}
			o := &goOption{short: tag.Get("short"), env: tag.Get("env"), at: to, t: t, must: tag.Get("required") == "true" || tag.Get("required") == "yes"}
			if n := tag.Get("long"); n != "" {
				o.long = space + n
			}
			o.def, o.has = tag.Lookup("default")
			list = append(list, o)
			return nil
		})
	}
	if err := read(c, "", 0); err != nil {
		return "", err
	}
	return m.goOptions(list, nil, at)
}

// goOptions gives options what the command line says, else their variables, else their
// defaults; chosen is told the words that are no options, and says whether each is known.
func (m *machine) goOptions(list []*goOption, chosen func(word string) bool, at spot) (bad string, err error) {
	set := func(o *goOption, text string) (bool, error) {
		return m.goSetText(o.at, o.t, text, ",", 10)
	}
	words := m.argv()[1:]
	command := ""
	for i := 0; i < len(words); i++ {
		w, ok := words[i].(string)
		if !ok {
			return "", undecided("a word of the command line")
		}
		if w == "--" {
			break
		}
		if len(w) < 2 || w[0] != '-' {
			if chosen != nil {
				if !chosen(w) {
					return "unexpected " + w, nil
				}
				command = strings.TrimSpace(command + " " + w)
			}
			continue
		}
		name, with, has := strings.Cut(strings.TrimLeft(w, "-"), "=")
		long := strings.HasPrefix(w, "--")
		var o *goOption
		off := false
		for _, x := range list {
			if x.command != "" && x.command != command {
				continue
			}
			switch {
			case long && x.long == name, !long && x.short == name && x.short != "":
				o = x
			case long && strings.HasPrefix(name, "no-") && x.long == name[3:] && x.t.is(goBool):
				o, off = x, true
			case !long && !has && len(name) > 1 && x.short == name[:1] && !x.t.is(goBool): // -p8000
				o, with, has = x, name[1:], true
			}
		}
		switch {
		case o == nil:
			return "unknown flag " + w, nil
		case off:
			with = "false"
		case !has && o.t.is(goBool):
			with = "true"
		case !has:
			if i++; i == len(words) {
				return "expected an argument for " + w, nil
			}
			if with, ok = words[i].(string); !ok {
				return "", undecided("a word of the command line")
			}
		}
		o.given = true
		if fit, err := set(o, with); err != nil || !fit {
			return "invalid argument for " + w, err
		}
	}
	for _, o := range list {
		if o.given || o.command != "" && o.command != command {
			continue
		}
		text, has := o.def, o.has
		if o.env != "" {
			if v, ok := m.lookup(o.env, at); ok && (v != "" || !o.has) {
				text, has = v, v != ""
			}
		}
		if !has && o.must {
			return "the required flag " + o.long + " was not given", nil
		}
		if has {
			if fit, err := set(o, text); err != nil || !fit {
				return "invalid value for " + o.long, err
			}
		}
	}
	return "", nil
}

// kingpin calls a method of kingpin: a flag that is described, the words that are read.
func (m *machine) kingpin(f *opaque, name string, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	var chain []*opaque // the calls before this one, the last first
	for o := f.recv; o != nil; {
		if !strings.HasSuffix(o.path, "()") {
			o = o.recv
			continue
		}
		chain = append(chain, o)
		o = o.recv
	}
	word := func(o *opaque, n int) (string, bool) {
		if n < len(o.args) {
			t, ok := o.args[n].(string)
			return t, ok
		}
		return "", false
	}
	method := func(o *opaque) string {
		p := strings.TrimSuffix(o.path, "()")
		return p[strings.LastIndexByte(p, '.')+1:]
	}
	commandOf := func(list []*opaque) string {
		var names []string
		for i := len(list) - 1; i >= 0; i-- {
			if method(list[i]) == "Command" {
				if t, ok := word(list[i], 0); ok {
					names = append(names, t)
				}
			}
		}
		return strings.Join(names, " ")
	}
	flagged := false
	for _, o := range chain {
		flagged = flagged || method(o) == "Flag"
	}
	kinds := map[string]*goType{"String": tString, "Int": tInt, "Bool": tBool, "Uint16": goBasic["uint16"], "Uint32": goBasic["uint32"], "Int32": goBasic["int32"], "Int64": goBasic["int64"], "Uint": goBasic["uint"], "Uint64": goBasic["uint64"], "Duration": tLength}
	switch {
	case name == "Command" && len(args) > 0:
		if t, ok := args[0].v.(string); ok {
			m.pins.commands = append(m.pins.commands, strings.TrimSpace(commandOf(chain)+" "+t))
			return nil, false, nil
		}
		return nil, true, giveUp("a command of kingpin")
	case name == "FullCommand" && len(chain) > 0:
		return []goValue{{commandOf(chain), tString}}, true, nil
	case flagged && (kinds[name] != nil || kinds[strings.TrimSuffix(name, "Var")] != nil):
		o := &goOption{command: commandOf(chain), t: kinds[strings.TrimSuffix(name, "Var")]}
		for i := len(chain) - 1; i >= 0; i-- {
			c := chain[i]
			t, ok := word(c, 0)
			switch method(c) {
			case "Flag":
				if o.long = t; !ok {
					return nil, true, giveUp("a flag of kingpin")
				}
			case "Default":
				if o.def, o.has = t, true; !ok || len(c.args) > 1 {
					return nil, true, giveUp("the default of a flag")
				}
			case "Envar", "OverrideDefaultFromEnvar":
				if o.env = t; !ok {
					return nil, true, giveUp("the variable of a flag")
				}
			case "Short":
				switch r := c.args[0].(type) {
				case integer:
					o.short = string(rune(r))
				case character:
					o.short = string(rune(r))
				default:
					return nil, true, giveUp("the letter of a flag")
				}
			case "Required":
				o.must = true
			}
		}
		if strings.HasSuffix(name, "Var") {
			c, ok := args[0].v.(*goCell)
			if !ok {
				return nil, true, giveUp("what kingpin fills")
			}
			o.at = c
			m.pins.flags = append(m.pins.flags, o)
			return nil, true, nil
		}
		z, err := m.goZero(o.t, s)
		if err != nil {
			return nil, true, err
		}
		o.at = &goCell{v: z, t: o.t}
		m.pins.flags = append(m.pins.flags, o)
		return []goValue{{o.at, pointerTo(o.t)}}, true, nil
	case name == "Parse" && !flagged:
		command := ""
		bad, err := m.goOptions(m.pins.flags, func(w string) bool {
			command = strings.TrimSpace(command + " " + w)
			for _, c := range m.pins.commands {
				if c == command || strings.HasPrefix(c, command+" ") {
					return true
				}
			}
			return false
		}, at)
		if err != nil {
			return nil, true, err
		}
		if bad != "" || command == "" && len(m.pins.commands) > 0 {
			return nil, true, &exit{}
		}
		out := []goValue{{command, tString}}
		if len(chain) > 0 { // of an application: an error as well
			out = append(out, goValue{nil, nil})
		}
		return out, true, nil
	case name == "MustParse" && len(args) > 0:
		return args[:1], true, nil
	}
	return nil, false, nil
}

// kingpins are the flags and commands that a program describes to kingpin.
type kingpins struct {
	flags    []*goOption
	commands []string
}

// koanf calls a method of koanf: files and variables that are read over each other.
func (m *machine) koanf(f *opaque, name string, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	root := f.recv
	for root != nil && root.recv != nil && !strings.HasSuffix(root.path, "koanf.New()") {
		root = root.recv
	}
	sep := "."
	if root != nil && len(root.args) > 0 {
		t, ok := root.args[0].(string)
		if sep = t; !ok {
			return nil, true, giveUp("a koanf with a separator that is not known")
		}
	}
	if m.settings == nil {
		m.settings = newObject()
	}
	if sep != "." {
		return nil, true, giveUp("a koanf with %s between", sep)
	}
	switch name {
	case "Load":
		if len(args) < 1 {
			return nil, true, giveUp("what koanf loads")
		}
		p, ok := args[0].v.(*opaque)
		if !ok {
			return nil, true, giveUp("what koanf loads")
		}
		from := strings.TrimSuffix(p.path, "()")
		switch {
		case strings.HasSuffix(from, "koanf/providers/file.Provider") && len(p.args) == 1:
			c := m.readFile(p.args[0])
			if t, failed := c.(*thrown); failed {
				return []goValue{{&goFault{msg: t.String()}, tFault}}, true, nil
			}
			x, err := m.parsed(c)
			if err != nil {
				return nil, true, err
			}
			o, isObject := m.fitted(x).(*object)
			if !isObject {
				return nil, true, giveUp("a file that koanf loads")
			}
			m.underlay(o, m.settings, 0)
			m.settings = o
		case strings.HasSuffix(from, "koanf/providers/env.Provider") && len(p.args) == 3:
			prefix, isText := p.args[0].(string)
			delim, isDelim := p.args[1].(string)
			if !isText || !isDelim || delim != "." && delim != "" {
				return nil, true, giveUp("the variables that koanf loads")
			}
			for _, k := range m.envKeys() {
				if !strings.HasPrefix(k, prefix) {
					continue
				}
				key := k
				if fn := p.args[2]; fn != nil {
					var out any
					switch fn := fn.(type) {
					case *goClosure:
						list, err := m.goCall(fn, []goValue{{k, tString}}, at)
						if err != nil {
							return nil, true, err
						}
						out = list[0].v
					case *function:
						if out, err = m.call(fn, undefined, []any{k}, nil, at); err != nil {
							return nil, true, err
						}
					}
					t, isText := out.(string)
					if key = t; !isText {
						return nil, true, giveUp("the name that koanf gives a variable")
					}
				}
				if key != "" {
					setPath(m.settings, key, m.env.text(k))
				}
			}
		case strings.HasSuffix(from, "koanf/providers/confmap.Provider") && len(p.args) == 2:
			o, isObject := p.args[0].(*object)
			if !isObject {
				return nil, true, giveUp("a map that koanf loads")
			}
			for _, k := range o.keys {
				setPath(m.settings, k, o.cells[k].v)
			}
		default:
			return nil, true, giveUp("what koanf loads")
		}
		return []goValue{{nil, nil}}, true, nil
	case "String", "Int", "Int64", "Bool", "Float64", "Strings", "Duration", "Exists", "Get", "MustString", "MustInt":
		key, ok := args[0].v.(string)
		if !ok {
			return nil, true, giveUp("a key of koanf")
		}
		x := any(m.settings)
		for _, part := range strings.Split(key, ".") {
			if o, isObject := x.(*object); isObject {
				x = cellOf(o, part)
			} else {
				x = nil
			}
		}
		if name == "Exists" {
			return []goValue{{x != nil, tBool}}, true, nil
		}
		kind := name
		switch name {
		case "Get":
			kind = ""
		case "Strings":
			kind = "StringSlice"
		case "MustString", "MustInt":
			kind = strings.TrimPrefix(name, "Must")
		}
		if kind == "Int" || kind == "Int64" { // what is no number is 0
			if t, isText := x.(string); isText {
				n, err := strconv.ParseInt(t, 10, 64)
				if err != nil {
					n = 0
				}
				x = integer(n)
			}
		}
		v, err := m.viperAs(kind, x)
		return []goValue{v}, true, err
	}
	return nil, true, giveUp("the method %s of koanf", name)
}
