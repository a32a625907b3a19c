package document

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Validate checks a document against a JSON Schema (draft 2020-12) and gives
// what does not hold, each with its place. It knows the keywords that the
// project's own schemas use: type, enum, const, pattern, minimum, required,
// properties, additionalProperties, items, $ref to #/$defs, anyOf.
func Validate(schema, doc *Node) []*Error {
	v := &validator{root: schema}
	v.check(schema, doc, "")
	return v.errs
}

type validator struct {
	root *Node
	errs []*Error
}

func (v *validator) fail(n *Node, format string, args ...any) {
	v.errs = append(v.errs, &Error{At: n.At(), Expected: fmt.Sprintf(format, args...)})
}

var kindNames = map[Kind]string{Null: "null", Map: "object", List: "array", String: "string", Number: "number", Bool: "boolean"}

func named(path string) string {
	if path == "" {
		return "the document"
	}
	return strings.TrimPrefix(path, ".")
}

func (v *validator) check(s, n *Node, path string) {
	if s == nil || s.Kind == Bool {
		if s != nil && s.Text == "false" {
			v.fail(n, "%s is not allowed here", named(path))
		}
		return
	}
	if ref := s.Get("$ref").Str(); ref != "" {
		v.check(v.root.Get(strings.Split(strings.TrimPrefix(ref, "#/"), "/")...), n, path)
		return
	}
	if any := s.Get("anyOf"); any != nil {
		for _, alt := range any.Kids {
			sub := &validator{root: v.root}
			if sub.check(alt, n, path); len(sub.errs) == 0 {
				return
			}
		}
		v.fail(n, "%s is none of the forms that are allowed", named(path))
		return
	}
	if t := s.Get("type"); t != nil {
		var want []string
		if t.Kind == List {
			for _, k := range t.Kids {
				want = append(want, k.Text)
			}
		} else {
			want = []string{t.Text}
		}
		got := kindNames[n.Kind]
		if _, whole := n.Int(); got == "number" && whole && slices.Contains(want, "integer") {
			got = "integer"
		}
		if !slices.Contains(want, got) {
			v.fail(n, "%s must be %s, and is %s", named(path), strings.Join(want, " or "), got)
			return
		}
	}
	if e := s.Get("enum"); e != nil {
		var all []string
		for _, k := range e.Kids {
			all = append(all, k.Text)
		}
		if !slices.Contains(all, n.Text) || n.Kind == Map || n.Kind == List {
			v.fail(n, "%s must be one of %s", named(path), strings.Join(all, ", "))
		}
	}
	if c := s.Get("const"); c != nil && c.Text != n.Text {
		v.fail(n, "%s must be %s", named(path), c.Text)
	}
	if p := s.Get("pattern").Str(); p != "" && n.Kind == String {
		if re, err := regexp.Compile(p); err == nil && !re.MatchString(n.Text) {
			v.fail(n, "%s must have the form %s", named(path), p)
		}
	}
	if m := s.Get("minimum"); m != nil && n.Kind == Number {
		lo, _ := strconv.ParseFloat(m.Text, 64)
		if f, err := strconv.ParseFloat(n.Text, 64); err == nil && f < lo {
			v.fail(n, "%s must be at least %s", named(path), m.Text)
		}
	}
	switch n.Kind {
	case Map:
		for _, r := range s.Get("required").Items() {
			if n.Get(r.Text) == nil {
				v.fail(n, "%s must have %s", named(path), r.Text)
			}
		}
		props, more := s.Get("properties"), s.Get("additionalProperties")
		for _, k := range n.Kids {
			sub := path + "." + k.Key
			if p := props.Get(k.Key); p != nil {
				v.check(p, k, sub)
			} else if more != nil {
				if more.Kind == Bool && more.Text == "false" {
					v.errs = append(v.errs, &Error{At: k.KeyAt(), Expected: fmt.Sprintf("%s is not known here", named(sub))})
				} else {
					v.check(more, k, sub)
				}
			}
		}
	case List:
		if items := s.Get("items"); items != nil {
			for i, k := range n.Kids {
				v.check(items, k, path+"."+strconv.Itoa(i))
			}
		}
	}
}
