package trace

import (
	"strconv"
	"strings"
)

// What configparser of Python does (Python 3.14 library reference,
// "configparser"; read 2026-11): a parser is a map of its sections, and each has
// what DEFAULT holds.

const defaults = "DEFAULT"

func newParser() *object {
	o := newObject()
	o.dict = true
	o.class = &class{name: "ConfigParser", builtin: true, statics: newObject(), methods: newObject()}
	o.set(defaults, newSection())
	return o
}

func newSection() *object {
	o := newObject()
	o.dict = true
	o.class = &class{name: "Section", builtin: true, statics: newObject(), methods: newObject()}
	return o
}

// section finds a section of a parser, and makes it where it is asked to.
func (o *object) section(name string, make bool) *object {
	if c := o.cells[name]; c != nil {
		s, _ := c.v.(*object)
		return s
	}
	if !make {
		return nil
	}
	s := newSection()
	if d := o.section(defaults, false); d != nil {
		for _, k := range d.keys {
			s.set(k, d.cells[k].v)
		}
	}
	o.set(name, s)
	return s
}

// inherit gives all sections what DEFAULT holds.
func (o *object) inherit() {
	d := o.section(defaults, false)
	for _, name := range o.keys {
		s := o.section(name, false)
		if s == nil || s == d {
			continue
		}
		for _, k := range d.keys {
			if s.cells[k] == nil {
				s.set(k, d.cells[k].v)
			}
		}
	}
}

// readSettings puts the settings of a text into a parser; false where it is not
// one that is followed.
func (o *object) readSettings(text string) bool {
	var s *object
	last := ""
	for row := range strings.SplitSeq(text, "\n") {
		row = strings.TrimRight(row, "\r")
		plain := strings.TrimSpace(row)
		switch {
		case plain == "" || plain[0] == '#' || plain[0] == ';':
		case row[0] == ' ' || row[0] == '\t':
			if s == nil || last == "" {
				return false
			}
			old, _ := s.get(last)
			s.set(last, pyShow(old)+"\n"+plain)
		case plain[0] == '[' && strings.HasSuffix(plain, "]"):
			s, last = o.section(plain[1:len(plain)-1], true), ""
		default:
			i := strings.IndexAny(plain, "=:")
			if s == nil || i < 0 {
				return false
			}
			last = strings.ToLower(strings.TrimSpace(plain[:i]))
			s.set(last, strings.TrimSpace(plain[i+1:]))
		}
	}
	o.inherit()
	return true
}

// interpolated puts other settings of the section into a value: %(name)s.
func (o *object) interpolated(text string, depth int) (string, bool) {
	for range 20 {
		i := strings.Index(text, "%(")
		if i < 0 {
			break
		}
		j := strings.Index(text[i:], ")s")
		if j < 0 || depth > 8 {
			return "", false
		}
		v, ok := o.get(strings.ToLower(text[i+2 : i+j]))
		t, isText := v.(string)
		if !ok || !isText {
			return "", false
		}
		inner, ok := o.interpolated(t, depth+1)
		if !ok {
			return "", false
		}
		text = text[:i] + inner + text[i+j+2:]
	}
	return strings.ReplaceAll(text, "%%", "%"), true
}

// parserMethod calls a method of a parser or of a section; done is false for any
// other.
func (m *machine) parserMethod(o *object, name string, args []any, keys map[string]any, s *scope, at spot) (v any, done bool, err error) {
	if o.class == nil || !o.class.builtin || o.class.name != "ConfigParser" && o.class.name != "Section" {
		return nil, false, nil
	}
	if opaqueAmong(args) != nil {
		return dontKnow("settings that are chosen by what is not known"), true, nil
	}
	arg := func(i int) string { return pyShow(at2(args, i)) }
	in, key := o, 0
	if o.class.name == "ConfigParser" {
		switch name {
		case "read", "read_file", "read_string", "readfp":
			var texts []any
			switch x := first(args).(type) {
			case *list:
				texts = x.items
			default:
				texts = []any{x}
			}
			done := &list{}
			for _, t := range texts {
				c, isContent := t.(*content)
				if name == "read_string" {
					c, isContent = &content{text: pyShow(t)}, true
				}
				if !isContent {
					f := m.readFile(t)
					if _, missing := f.(*thrown); missing {
						continue
					}
					if c, isContent = f.(*content); !isContent {
						return nil, true, undecided("settings that are not known")
					}
				}
				if !o.readSettings(c.text) {
					return nil, true, giveUp("settings that are not followed")
				}
				done.items = append(done.items, t)
			}
			if name != "read" {
				return nil, true, nil
			}
			return done, true, nil
		case "read_dict":
			d, ok := first(args).(*object)
			if !ok {
				return nil, true, undecided("settings that are not known")
			}
			for _, k := range d.keys {
				sec := o.section(k, true)
				if from, ok := d.cells[k].v.(*object); ok {
					for _, n := range from.keys {
						sec.set(strings.ToLower(n), pyShow(from.cells[n].v))
					}
				}
			}
			o.inherit()
			return nil, true, nil
		case "sections":
			l := &list{}
			for _, k := range o.keys {
				if k != defaults {
					l.items = append(l.items, k)
				}
			}
			return l, true, nil
		case "has_section":
			return o.section(arg(0), false) != nil && arg(0) != defaults, true, nil
		case "add_section":
			o.section(arg(0), true)
			return nil, true, nil
		case "set":
			sec := o.section(arg(0), false)
			if sec == nil {
				return nil, true, raise("NoSectionError", arg(0))
			}
			sec.set(strings.ToLower(arg(1)), at2(args, 2))
			return nil, true, nil
		case "has_option":
			sec := o.section(arg(0), false)
			return sec != nil && sec.cells[strings.ToLower(arg(1))] != nil, true, nil
		case "get", "getint", "getfloat", "getboolean":
			in, key = o.section(arg(0), false), 1
		case "options", "items":
			if len(args) == 0 {
				return nil, false, nil
			}
			sec := o.section(arg(0), false)
			if sec == nil {
				return nil, true, raise("NoSectionError", arg(0))
			}
			return sec.view(map[string]string{"options": "keys", "items": "items"}[name]), true, nil
		default:
			return nil, false, nil
		}
	}
	switch name {
	case "get", "getint", "getfloat", "getboolean":
	default:
		return nil, false, nil
	}
	fallback, has := keys["fallback"]
	if !has && len(args) > key+1 && o.class.name == "Section" {
		fallback, has = args[key+1], true
	}
	if in == nil || in.cells[strings.ToLower(arg(key))] == nil {
		switch {
		case has:
			return fallback, true, nil
		case o.class.name == "Section":
			return nil, true, nil
		case in == nil:
			return nil, true, raise("NoSectionError", arg(0))
		}
		return nil, true, raise("NoOptionError", arg(1))
	}
	v, _ = in.get(strings.ToLower(arg(key)))
	text, isText := v.(string)
	if !isText {
		return v, true, nil
	}
	text, ok := in.interpolated(text, 0)
	if !ok {
		return nil, true, giveUp("settings that are put together")
	}
	switch name {
	case "getint":
		i, err := strconv.ParseInt(strings.TrimSpace(text), 10, 64)
		if err != nil {
			return nil, true, raise("ValueError", "invalid literal for int()")
		}
		return integer(i), true, nil
	case "getfloat":
		f, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return nil, true, raise("ValueError", "could not convert to float")
		}
		return f, true, nil
	case "getboolean":
		switch strings.ToLower(text) {
		case "1", "yes", "true", "on":
			return true, true, nil
		case "0", "no", "false", "off":
			return false, true, nil
		}
		return nil, true, raise("ValueError", "Not a boolean")
	}
	return text, true, nil
}
