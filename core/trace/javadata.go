package trace

import (
	"path"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// Libraries of Java that read data: Jackson (2.20, com.fasterxml.jackson.databind), Gson
// (2.13), org.json (20250517), SnakeYAML (2.5) and the Typesafe config library (1.4).

// jvTree is a part of a document as one of those libraries shows it.
func (m *machine) jvTree(of string, v any, there bool) *object {
	o := jvBuiltin(of)
	o.set("value", v)
	down := func(key any) (any, bool) {
		switch x := v.(type) {
		case *object:
			if name, ok := key.(string); ok && x.cells[name] != nil {
				return x.cells[name].v, true
			}
		case *list:
			if i, ok := key.(integer); ok && i >= 0 && int(i) < len(x.items) {
				return x.items[i], true
			}
		}
		return nil, false
	}
	method := func(names string, do func(m *machine, args []any) (any, error)) {
		for name := range strings.FieldsSeq(names) {
			o.class.methods.set(name, &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
				return do(m, args)
			}})
		}
	}
	number := func(v any, spare any) (any, error) {
		switch x := v.(type) {
		case integer:
			return x, nil
		case string:
			if n, err := strconv.ParseInt(strings.TrimSpace(x), 10, 32); err == nil {
				return integer(n), nil
			}
		case *opaque:
			return x, nil
		}
		if spare == nil {
			return nil, raise("NumberFormatException", "a part of a document that is no number")
		}
		return spare, nil
	}
	text := func(v any) any {
		if x, ok := v.(*opaque); ok {
			return x
		}
		if v == nil {
			return nil
		}
		return jvShow(v)
	}
	second := func(args []any, spare any) any {
		if len(args) > 1 {
			return args[1]
		}
		return spare
	}
	switch of {
	case "JsonNode": // Jackson
		child := func(args []any, missing bool) (any, error) {
			x, ok := down(first(args))
			if !ok && !missing {
				return nil, nil
			}
			return m.jvTree(of, x, ok), nil
		}
		method("get", func(m *machine, args []any) (any, error) { return child(args, false) })
		method("path", func(m *machine, args []any) (any, error) { return child(args, true) })
		method("required", func(m *machine, args []any) (any, error) {
			if _, ok := down(first(args)); !ok {
				return nil, raise("IllegalArgumentException", "a part of a document is not there")
			}
			return child(args, true)
		})
		method("at", func(m *machine, args []any) (any, error) {
			p, ok := first(args).(string)
			if !ok {
				return dontKnow("a part of a document"), nil
			}
			x, found := v, true
			for _, k := range strings.Split(strings.TrimPrefix(p, "/"), "/") {
				in, isObject := x.(*object)
				if !isObject || in.cells[k] == nil {
					x, found = nil, false
					break
				}
				x = in.cells[k].v
			}
			return m.jvTree(of, x, found), nil
		})
		method("has hasNonNull", func(m *machine, args []any) (any, error) { _, ok := down(first(args)); return ok, nil })
		method("isMissingNode", func(*machine, []any) (any, error) { return !there, nil })
		method("isNull", func(*machine, []any) (any, error) { return there && v == nil, nil })
		method("asInt intValue asLong longValue", func(_ *machine, args []any) (any, error) {
			spare := first(args)
			if spare == nil {
				spare = integer(0)
			}
			return number(v, spare)
		})
		method("asText textValue asString stringValue", func(_ *machine, args []any) (any, error) {
			if t := text(v); t != nil {
				return t, nil
			}
			if len(args) > 0 {
				return args[0], nil
			}
			return "", nil
		})
		method("asBoolean booleanValue", func(*machine, []any) (any, error) { b, _ := v.(bool); return b, nil })
	case "JsonObject": // Gson
		method("get getAsJsonObject getAsJsonPrimitive getAsJsonArray", func(m *machine, args []any) (any, error) {
			if len(args) == 0 {
				return o, nil
			}
			x, ok := down(first(args))
			if !ok {
				return nil, nil
			}
			return m.jvTree(of, x, true), nil
		})
		method("has", func(m *machine, args []any) (any, error) { _, ok := down(first(args)); return ok, nil })
		method("getAsInt getAsLong", func(*machine, []any) (any, error) { return number(v, nil) })
		method("getAsString", func(*machine, []any) (any, error) { return text(v), nil })
		method("getAsBoolean", func(*machine, []any) (any, error) { b, _ := v.(bool); return b, nil })
	case "JSONObject": // org.json
		method("getJSONObject optJSONObject", func(m *machine, args []any) (any, error) {
			x, ok := down(first(args))
			if !ok {
				return nil, nil
			}
			return m.jvTree(of, x, true), nil
		})
		method("has", func(m *machine, args []any) (any, error) { _, ok := down(first(args)); return ok, nil })
		method("getInt", func(m *machine, args []any) (any, error) { x, _ := down(first(args)); return number(x, nil) })
		method("optInt", func(m *machine, args []any) (any, error) {
			x, _ := down(first(args))
			return number(x, second(args, integer(0)))
		})
		method("getString optString", func(m *machine, args []any) (any, error) {
			if x, ok := down(first(args)); ok {
				return text(x), nil
			}
			return second(args, ""), nil
		})
		method("getBoolean optBoolean", func(m *machine, args []any) (any, error) {
			if x, ok := down(first(args)); ok {
				b, _ := x.(bool)
				return b, nil
			}
			return second(args, false), nil
		})
	case "Config": // Typesafe: its keys are dotted
		key := func(args []any) (string, any, bool) {
			name, _ := first(args).(string)
			x, _ := v.(*object)
			if c := x.cells[name]; c != nil {
				return name, c.v, true
			}
			return name, nil, false
		}
		method("hasPath", func(_ *machine, args []any) (any, error) {
			name, _, ok := key(args)
			x, _ := v.(*object)
			for _, k := range x.keys {
				ok = ok || strings.HasPrefix(k, name+".")
			}
			return ok, nil
		})
		method("resolve withFallback", func(*machine, []any) (any, error) { return o, nil })
		method("getConfig", func(m *machine, args []any) (any, error) {
			name, _, _ := key(args)
			x, _ := v.(*object)
			in := newObject()
			for _, k := range x.keys {
				if rest, ok := strings.CutPrefix(k, name+"."); ok {
					in.set(rest, x.cells[k].v)
				}
			}
			if len(in.keys) == 0 {
				return nil, raise("ConfigException.Missing", "no "+name+" in the settings")
			}
			return m.jvTree(of, in, true), nil
		})
		get := func(args []any) (any, error) {
			name, x, ok := key(args)
			if !ok {
				return nil, raise("ConfigException.Missing", "no "+name+" in the settings")
			}
			return x, nil
		}
		method("getString", func(_ *machine, args []any) (any, error) {
			x, err := get(args)
			return text(x), err
		})
		method("getInt getLong", func(_ *machine, args []any) (any, error) {
			x, err := get(args)
			if err != nil {
				return nil, err
			}
			return number(x, nil)
		})
		method("getBoolean", func(_ *machine, args []any) (any, error) {
			x, err := get(args)
			t, _ := x.(string)
			return t == "true" || t == "yes" || t == "on", err
		})
	}
	return o
}

// jvData reads a document that one of those libraries is given: what was read of a file, a
// file, or a text; ok is false for anything else.
func (m *machine) jvData(from any) (v any, ok bool, err error) {
	switch x := from.(type) {
	case pyPath:
		c := m.readFile(x)
		if t, failed := c.(*thrown); failed {
			return nil, true, t
		}
		from = c
	case string, *content:
	default:
		return nil, false, nil
	}
	if _, known := from.(*opaque); known {
		return nil, false, nil
	}
	v, err = m.parsed(from)
	return v, err == nil, err
}

// jvShaped makes of a part of a document what a type is for: a tree, a map, an object of a
// class of the tree.
func (m *machine) jvShaped(v any, typ any, tree string, s *scope, at spot) (any, bool, error) {
	o, ok := typ.(*opaque)
	if !ok {
		return nil, false, nil
	}
	if o.of == nil {
		switch strings.TrimSuffix(value.Tail(strings.TrimSuffix(o.path, ".class"), 1), "()") {
		case "JsonNode", "JsonObject", "ObjectNode", "JsonElement":
			return m.jvTree(tree, v, true), true, nil
		case "Map", "HashMap", "Object", "LinkedHashMap":
			return jvMaps(v, 0), true, nil
		}
		return nil, false, nil
	}
	x, err := m.jvBean(o.of, v, at, 0)
	return x, err == nil, err
}

// jvMaps turns the objects of a document into maps of Java.
func jvMaps(v any, depth int) any {
	switch x := v.(type) {
	case *object:
		o := jvMap()
		for _, k := range x.keys {
			if depth < maxDepth {
				jvPut(o, k, jvMaps(x.cells[k].v, depth+1))
			}
		}
		return o
	case *list:
		l := &list{}
		for _, y := range x.items {
			if depth < maxDepth {
				l.items = append(l.items, jvMaps(y, depth+1))
			}
		}
		return l
	}
	return v
}

// jvBean makes an object of a class of the tree whose fields are those of a document.
func (m *machine) jvBean(c *class, v any, at spot, depth int) (any, error) {
	d, ok := v.(*object)
	if !ok || depth > 6 {
		return nil, giveUp("what a document is put into")
	}
	named := func(decl *code.Node, name string) string {
		if mark := jvMark(decl, "JsonProperty", "SerializedName", "JsonAlias"); mark != nil {
			if n := jvMarkArgs(mark)["value"]; n.Is(code.String) {
				return n.Name
			}
		}
		return name
	}
	fit := func(typ string, x any) (any, error) {
		if in, isObject := x.(*object); isObject {
			if of, ok := m.jvNamed(typ, c.scope).(*class); ok {
				return m.jvBean(of, in, at, depth+1)
			}
			return jvMaps(in, 0), nil
		}
		switch typ {
		case "int", "long", "Integer", "Long", "short":
			if t, isText := x.(string); isText {
				n, err := strconv.ParseInt(t, 10, 32)
				if err != nil {
					return nil, raise("IllegalArgumentException", "a number that is none")
				}
				return integer(n), nil
			}
		case "String":
			if x != nil {
				return jvShow(x), nil
			}
		}
		return x, nil
	}
	for _, k := range c.node.Kid(1).Kids {
		if k.Is(code.Func) && k.Name == "constructor" { // a record
			var args []any
			for _, p := range paramsOf(k.Kid(0)) {
				x := jvZero(p.Alias)
				if cell := d.cells[named(p, p.Name)]; cell != nil {
					var err error
					if x, err = fit(p.Alias, cell.v); err != nil {
						return nil, err
					}
				}
				args = append(args, x)
			}
			return m.jvMake(c, args, at)
		}
	}
	made, err := m.jvMake(c, nil, at)
	o, ok := made.(*object)
	if err == nil && !ok {
		err = giveUp("how %s is made", c.name)
	}
	if err != nil {
		return nil, err
	}
	for _, of := range c.line() {
		for _, k := range of.node.Kid(1).Kids {
			if !k.Is(code.Bind) || k.Flag&code.Static != 0 {
				continue
			}
			name := k.Kid(0).Name
			if cell := d.cells[named(k, name)]; cell != nil {
				x, err := fit(k.Alias, cell.v)
				if err != nil {
					return nil, err
				}
				o.set(name, x)
			}
		}
	}
	return o, nil
}

// jvReader is a reader of documents: Jackson's ObjectMapper, Gson, SnakeYAML's Yaml.
func (m *machine) jvReader(kind string, s *scope) *object {
	o := jvBuiltin(kind)
	method := func(name string, do func(m *machine, args []any, at spot) (any, error)) {
		o.class.methods.set(name, &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
			return do(m, args, at)
		}})
	}
	read := func(tree string, shaped bool) func(m *machine, args []any, at spot) (any, error) {
		return func(m *machine, args []any, at spot) (any, error) {
			v, ok, err := m.jvData(first(args))
			if err != nil {
				return nil, err
			}
			if !ok {
				return dontKnow("a document that is not known"), nil
			}
			if !shaped || len(args) < 2 {
				if tree == "" {
					return jvMaps(v, 0), nil
				}
				return m.jvTree(tree, v, true), nil
			}
			x, ok, err := m.jvShaped(v, args[1], tree, s, at)
			if err == nil && !ok {
				return dontKnow("what a document is put into"), nil
			}
			return x, err
		}
	}
	itself := func(*machine, []any, spot) (any, error) { return o, nil }
	switch kind {
	case "ObjectMapper":
		method("readTree", read("JsonNode", false))
		method("readValue", read("JsonNode", true))
		for _, name := range []string{"configure", "registerModule", "findAndRegisterModules", "enable", "disable", "setPropertyNamingStrategy"} {
			method(name, itself)
		}
		o.class.methods.remove("setPropertyNamingStrategy") // the names of fields change
	case "Gson":
		method("fromJson", read("JsonObject", true))
	case "Yaml":
		method("load", read("", false))
		method("loadAs", read("", true))
	}
	return o
}

// jvConfig is what ConfigFactory.load finds: application.conf among the resources, with
// reference.conf behind it (Typesafe config 1.4, "Standard behavior"); ok is false where
// there is none.
func (m *machine) jvConfig(name string, s *scope) (any, bool, error) {
	all := newObject()
	found := false
	for _, file := range []string{"reference.conf", name} {
		for _, dir := range []string{"src/main/resources", "resources", "src/resources", "src", "conf", "", source.Dir(s.module.file.Name)} {
			p := path.Join(m.e.Dir, dir, file)
			text, ok := m.e.Loader.Text(p)
			if !ok {
				continue
			}
			found = found || file == name
			d := document.HOCON(p, []byte(text), place.NewLines([]byte(text)))
			for _, n := range d.Items() {
				v := n.Str()
				if in, isVar := strings.CutPrefix(v, "${?"); isVar && strings.HasSuffix(v, "}") {
					if now, set := m.env.get(strings.TrimSuffix(in, "}")); set {
						all.set(n.Key, now)
					}
					continue
				}
				if strings.Contains(v, "${") {
					return nil, true, giveUp("a substitution in %s", p)
				}
				all.set(n.Key, v)
			}
			break
		}
	}
	for _, k := range all.keys { // properties of the machine count before the file
		if v, ok := m.jvSystem()[k].(string); ok {
			all.set(k, v)
		}
	}
	return m.jvTree("Config", all, true), found, nil
}
