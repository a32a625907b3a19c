package trace

import (
	"slices"
	"strings"

	"ubique/core/code"
)

// What Python says of the fields of a class (Python 3.14 library reference,
// "dataclasses", "typing.get_type_hints").

// shellWords splits a text as a shell does (Python 3.14 library reference, "shlex");
// whole is false where a quote is not closed.
func shellWords(t string, comments bool) (words []string, whole bool) {
	var b strings.Builder
	in := false
	for i := 0; i < len(t); i++ {
		switch c := t[i]; {
		case c == ' ' || c == '\t' || c == '\n' || c == '\r':
			if in {
				words = append(words, b.String())
				b.Reset()
			}
			in = false
		case c == '#' && comments:
			for i < len(t) && t[i] != '\n' {
				i++
			}
			i--
			if in {
				words = append(words, b.String())
				b.Reset()
			}
			in = false
		case c == '\\' && i+1 < len(t):
			i++
			in = true
			b.WriteByte(t[i])
		case c == '\'' || c == '"':
			in = true
			end := i + 1
			for end < len(t) && t[end] != c {
				if c == '"' && t[end] == '\\' && end+1 < len(t) && (t[end+1] == '"' || t[end+1] == '\\') {
					end++
				}
				b.WriteByte(t[end])
				end++
			}
			if end >= len(t) {
				return nil, false
			}
			i = end
		default:
			in = true
			b.WriteByte(c)
		}
	}
	if in {
		words = append(words, b.String())
	}
	return words, true
}

// pyHints is a dictionary of the types of the fields that a class declares.
func (m *machine) pyHints(c *class) (any, error) {
	o := newObject()
	o.dict = true
	for _, x := range slices.Backward(c.line()) {
		for _, f := range x.fields {
			t, err := m.pyHint(x, f)
			if err != nil {
				return nil, err
			}
			o.set(f.Kid(0).Name, t)
		}
	}
	return o, nil
}

// pyHint is the type that a field is declared with: a class, or one of the language.
func (m *machine) pyHint(c *class, f *code.Node) (any, error) {
	text := c.scope.module.file.Text(f)
	if name, _, ok := strings.Cut(text, "="); ok {
		text = name
	}
	if f.Alias == "" || strings.ContainsAny(text, "|[") || strings.Contains(text, "Optional") {
		return dontKnow("the type of a field"), nil
	}
	if later := c.scope.module.top.vars["annotations"]; later != nil {
		if o, ok := later.v.(*opaque); ok && o.path == "__future__.annotations" { // PEP 563: they stay texts
			return f.Alias, nil
		}
	}
	n := &code.Node{Kind: code.Name, Name: strings.SplitN(f.Alias, ".", 2)[0], Off: f.Off, End: f.End}
	for _, part := range strings.Split(f.Alias, ".")[1:] {
		n = &code.Node{Kind: code.Member, Name: part, Off: f.Off, End: f.End, Kids: []*code.Node{n}}
	}
	return m.eval(n, c.scope)
}

// pyDataField is what dataclasses.fields says of one.
func (m *machine) pyDataField(c *class, name string) (any, error) {
	o := newObject()
	o.class = &class{name: "Field", builtin: true, methods: newObject(), statics: newObject()}
	o.set("name", name)
	missing := &opaque{path: "dataclasses.MISSING"}
	o.set("default", missing)
	o.set("default_factory", missing)
	o.set("init", true)
	meta := newObject()
	meta.dict = true
	o.set("metadata", meta)
	for _, x := range c.line() {
		i := slices.IndexFunc(x.fields, func(f *code.Node) bool { return f.Kid(0).Name == name })
		if i < 0 {
			continue
		}
		t, err := m.pyHint(x, x.fields[i])
		if err != nil {
			return nil, err
		}
		o.set("type", t)
		break
	}
	if d, ok := classKey(c, name, true); ok {
		f, isField := d.(*opaque)
		if !isField || f.path != "dataclasses.field()" {
			o.set("default", d)
			return o, nil
		}
		for k, v := range f.keys {
			o.set(k, v)
		}
	}
	return o, nil
}
