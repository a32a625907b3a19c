package trace

import (
	"reflect"
	"strconv"
	"strings"
	"time"
	"unicode"
)

// What libraries of Go put into a structure from the environment (kelseyhightower/
// envconfig 1.4, README; caarlos0/env 11.3, README and env.go).

// goEnvs fills a structure; done is false for any other call.
func (m *machine) goEnvs(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	i := strings.LastIndexByte(f.path, '.')
	if i < 0 {
		return nil, false, nil
	}
	lib, name := f.path[:i], f.path[i+1:]
	var bad string
	switch {
	case lib == "github.com/kelseyhightower/envconfig" && (name == "Process" || name == "MustProcess") && len(args) == 2:
		prefix, ok := args[0].v.(string)
		c, isCell := args[1].v.(*goCell)
		if !ok || !isCell {
			return nil, true, giveUp("what envconfig fills")
		}
		bad, err = m.envconfig(c, prefix, at, s, 0)
	case strings.HasPrefix(lib, "github.com/caarlos0/env") && (name == "Parse" || name == "ParseWithOptions") && len(args) > 0:
		c, isCell := args[0].v.(*goCell)
		o := caarlos{}
		if !isCell {
			return nil, true, giveUp("what env fills")
		}
		if name == "ParseWithOptions" {
			if len(args) != 2 || !m.caarlosOptions(&o, args[1]) {
				return nil, true, giveUp("options of env")
			}
		}
		bad, err = m.caarlos(c, o, at, s, 0)
	default:
		return nil, false, nil
	}
	if err != nil {
		return nil, true, err
	}
	if name == "MustProcess" {
		if bad != "" {
			return nil, true, &goPanic{goValue{&goFault{msg: bad}, tFault}, false}
		}
		return nil, true, nil
	}
	if bad != "" {
		return []goValue{{&goFault{msg: bad}, tFault}}, true, nil
	}
	return []goValue{{nil, nil}}, true, nil
}

// envconfig fills a structure; bad says what is wrong with the environment.
func (m *machine) envconfig(c *goCell, prefix string, at spot, s *goScope, depth int) (bad string, err error) {
	r, ok := c.v.v.(*goRecord)
	u := c.v.t.under()
	if !ok || u == nil || len(u.fields) != len(r.fields) || depth > 8 {
		return "", giveUp("what envconfig fills")
	}
	for i, f := range u.fields {
		tag := reflect.StructTag(f.tag)
		if tag.Get("ignored") == "true" || !f.embedded && !unicode.IsUpper([]rune(f.name)[0]) {
			continue
		}
		alt := strings.ToUpper(tag.Get("envconfig"))
		key := f.name
		if yes, _ := strconv.ParseBool(tag.Get("split_words")); yes {
			key = splitWords(f.name)
		}
		if alt != "" {
			key = alt
		}
		if prefix != "" {
			key = prefix + "_" + key
		}
		key = strings.ToUpper(key)
		if in := f.t.under(); in != nil && in.kind == goStruct && f.t != nil {
			if m.goDecodesItself(f.t) {
				return "", giveUp("a field that decodes itself")
			}
			inner := prefix
			if !f.embedded {
				inner = key
			}
			if bad, err = m.envconfig(r.fields[i], inner, at, s, depth+1); bad != "" || err != nil {
				return bad, err
			}
			continue
		}
		text, set := m.lookup(key, at)
		if !set && alt != "" {
			text, set = m.lookup(alt, at)
		}
		def := tag.Get("default")
		if !set && def != "" {
			text = def
		}
		if !set && def == "" {
			if yes, _ := strconv.ParseBool(tag.Get("required")); yes {
				return "required key " + key + " missing value", nil
			}
			continue
		}
		fit, err := m.goSetText(r.fields[i], f.t, text, ",", 0)
		if err != nil {
			return "", err
		}
		if !fit {
			return "assigning " + key, nil
		}
	}
	return "", nil
}

// splitWords puts a bar between the words of a name, as split_words of envconfig does.
func splitWords(name string) string {
	r := []rune(name)
	var b strings.Builder
	for i, c := range r {
		if i > 0 && unicode.IsUpper(c) && (unicode.IsLower(r[i-1]) || i+1 < len(r) && unicode.IsLower(r[i+1]) && unicode.IsUpper(r[i-1])) {
			b.WriteByte('_')
		}
		b.WriteRune(c)
	}
	return b.String()
}

// caarlos are the options of caarlos0/env.
type caarlos struct {
	prefix string
	must   bool
	byName bool
	from   map[string]string
}

func (m *machine) caarlosOptions(o *caarlos, v goValue) bool {
	r, ok := v.v.(*goRecord)
	if !ok {
		if x, isObject := v.v.(*object); isObject {
			for _, k := range x.keys {
				if !o.option(k, m.goFrom(x.cells[k].v)) {
					return false
				}
			}
			return true
		}
		return false
	}
	u := v.t.under()
	if u == nil || len(u.fields) != len(r.fields) {
		return false
	}
	for i, f := range u.fields {
		if !o.option(f.name, r.fields[i].v) {
			return false
		}
	}
	return true
}

func (o *caarlos) option(name string, v goValue) (ok bool) {
	switch name {
	case "Prefix":
		o.prefix, ok = v.v.(string)
	case "RequiredIfNoDef":
		o.must, ok = v.v.(bool)
	case "UseFieldNameByDefault":
		o.byName, ok = v.v.(bool)
	case "Environment":
		t, isTable := v.v.(*goTable)
		if !isTable {
			return false
		}
		o.from, ok = map[string]string{}, true
		for _, e := range t.m {
			x, isText := e.c.v.v.(string)
			key, isKey := e.k.v.(string)
			if !isText || !isKey {
				return false
			}
			o.from[key] = x
		}
	}
	return ok
}

// caarlos fills a structure; bad says what is wrong with the environment.
func (m *machine) caarlos(c *goCell, o caarlos, at spot, s *goScope, depth int) (bad string, err error) {
	r, ok := c.v.v.(*goRecord)
	u := c.v.t.under()
	if !ok || u == nil || len(u.fields) != len(r.fields) || depth > 8 {
		return "", giveUp("what env fills")
	}
	for i, f := range u.fields {
		tag := reflect.StructTag(f.tag)
		if !f.embedded && !unicode.IsUpper([]rune(f.name)[0]) {
			continue
		}
		words := strings.Split(tag.Get("env"), ",")
		key := words[0]
		if key == "" && o.byName {
			key = strings.ToUpper(splitWords(f.name))
		}
		if key == "-" {
			continue
		}
		def, has := tag.Lookup("envDefault")
		must, full, expands, whole := o.must && !has, false, false, true
		for _, w := range words[1:] {
			switch strings.TrimSpace(w) {
			case "required":
				must = true
			case "notEmpty":
				full = true
			case "expand":
				expands = true
			case "unset", "":
			default:
				whole = false
			}
		}
		in := f.t.under()
		isStruct := in != nil && in.kind == goStruct && f.t != tLength
		if key != "" || has {
			if !whole {
				return "", giveUp("a field of env")
			}
			text, set := "", false
			if key != "" {
				if o.from != nil {
					text, set = o.from[o.prefix+key]
				} else {
					text, set = m.lookup(o.prefix+key, at)
				}
			}
			if has && (!set || text == "") {
				text, set = def, true
			}
			if expands {
				text = expand(text, func(name string) string { v, _ := m.lookup(name, at); return v })
			}
			if must && !set && key != "" {
				return "required environment variable " + key + " is not set", nil
			}
			if full && text == "" {
				return "environment variable " + key + " should not be empty", nil
			}
			if text != "" {
				sep := tag.Get("envSeparator")
				if sep == "" {
					sep = ","
				}
				fit, err := m.goSetText(r.fields[i], f.t, text, sep, 10)
				if err != nil {
					return "", err
				}
				if !fit {
					return "parse error on field " + f.name, nil
				}
			}
			if key != "" {
				continue
			}
		}
		below := r.fields[i]
		if f.t.kind == goPointer {
			p, ok := below.v.v.(*goCell)
			if !ok {
				continue
			}
			below, isStruct = p, true
		}
		if isStruct && below.v.v != nil {
			if _, ok := below.v.v.(*goRecord); !ok {
				continue
			}
			p := o
			p.prefix += tag.Get("envPrefix")
			if bad, err = m.caarlos(below, p, at, s, depth+1); bad != "" || err != nil {
				return bad, err
			}
		}
	}
	return "", nil
}

// goDecodesItself reports whether a type of the program takes a text itself.
func (m *machine) goDecodesItself(t *goType) bool {
	if t == nil || t.pkg == nil {
		return false
	}
	for _, name := range []string{"Decode", "Set", "UnmarshalText", "UnmarshalBinary"} {
		if t.pkg.methods[t.name][name] != nil {
			return true
		}
	}
	return false
}

// goSetText gives a variable what a text says; fit is false where it says nothing
// that its type takes.
func (m *machine) goSetText(c *goCell, t *goType, text, sep string, base int) (fit bool, err error) {
	if m.goDecodesItself(t) {
		own := t.pkg.methods[t.name]
		if own["UnmarshalText"] == nil || own["Decode"] != nil || own["Set"] != nil {
			return false, giveUp("a field that decodes itself")
		}
		bad, err := m.goTakes(c, t, "UnmarshalText", text)
		return bad == "", err
	}
	switch u := t.under(); {
	case t != nil && t.name == "log/slog.Level":
		n, ok := slogLevel(text)
		c.v = goValue{n, t}
		return ok, nil
	case t == tLength:
		d, err := time.ParseDuration(text)
		if err != nil {
			return false, nil
		}
		c.v = goValue{integer(d), t}
	case u == nil:
		return false, giveUp("a field of a type that is not followed")
	case u.kind == goString:
		c.v = goValue{text, t}
	case u.kind == goInt:
		bits := u.bits
		if bits == 0 {
			bits = 64
		}
		n, err := strconv.ParseInt(text, base, bits)
		if u.unsigned {
			var k uint64
			k, err = strconv.ParseUint(text, base, bits)
			n = int64(k)
		} else if base == 10 && t == tInt { // env takes 32 bits for int
			n, err = strconv.ParseInt(text, base, 32)
		}
		if err != nil {
			return false, nil
		}
		c.v = goValue{integer(n), t}
	case u.kind == goFloat:
		x, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return false, nil
		}
		c.v = goValue{x, t}
	case u.kind == goBool:
		b, err := strconv.ParseBool(text)
		if err != nil {
			return false, nil
		}
		c.v = goValue{b, t}
	case u.kind == goPointer:
		in := &goCell{t: u.elem}
		if fit, err = m.goSetText(in, u.elem, text, sep, base); err != nil || !fit {
			return fit, err
		}
		c.v = goValue{in, t}
	case u.kind == goSlice:
		l := &goList{}
		if strings.TrimSpace(text) != "" {
			for _, w := range strings.Split(text, sep) {
				in := &goCell{t: u.elem}
				if fit, err = m.goSetText(in, u.elem, w, sep, base); err != nil || !fit {
					return fit, err
				}
				l.a = append(l.a, in)
			}
		}
		c.v = goValue{l, t}
	default:
		return false, giveUp("a field of a type that is not followed")
	}
	return true, nil
}
