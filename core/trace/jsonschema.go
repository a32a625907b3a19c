package trace

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// schemaRules say how a schema is applied to data (Ajv 8, "Options to modify
// validated data").
type schemaRules struct{ coerce, fill, remove bool }

// schemaWords are the words of a schema that are followed (JSON Schema 2020-12,
// Validation).
var schemaWords = words(`$schema $id title description examples type default enum const minimum maximum exclusiveMinimum exclusiveMaximum minLength maxLength pattern
	properties required additionalProperties separator deprecated`)

// fits applies a schema to a value: it gives what the value becomes, and whether
// it is as the schema wants it. ok is false where that is not followed.
func (m *machine) fits(schema *object, v any, r schemaRules, depth int) (now any, fit, ok bool) {
	for _, k := range schema.keys {
		if !schemaWords[k] || depth > 12 {
			return v, false, false
		}
	}
	get := func(k string) any { x, _ := schema.get(k); return x }
	if !known(v) || m.use(1) != nil {
		return v, false, false
	}
	kind, _ := get("type").(string)
	if t := get("type"); t != undefined && kind == "" {
		return v, false, false
	}
	if kind != "" {
		if v, fit = ofKind(kind, v, r.coerce); !fit {
			return v, false, true
		}
	}
	if l, isList := get("enum").(*list); isList && !slices.ContainsFunc(l.items, func(x any) bool { same, ok := equals(x, v, true); return ok && same }) {
		return v, false, true
	}
	if x := get("const"); x != undefined {
		if same, ok := equals(x, v, true); !ok || !same {
			return v, false, ok
		}
	}
	if n, isNumber := v.(float64); isNumber {
		for _, k := range []string{"minimum", "maximum", "exclusiveMinimum", "exclusiveMaximum"} {
			limit, set := get(k).(float64)
			switch {
			case !set && get(k) != undefined:
				return v, false, false
			case !set:
			case k == "minimum" && n < limit, k == "maximum" && n > limit, k == "exclusiveMinimum" && n <= limit, k == "exclusiveMaximum" && n >= limit:
				return v, false, true
			}
		}
	}
	if t, isText := v.(string); isText {
		if n, set := get("minLength").(float64); set && float64(len([]rune(t))) < n {
			return v, false, true
		}
		if n, set := get("maxLength").(float64); set && float64(len([]rune(t))) > n {
			return v, false, true
		}
		if p, set := get("pattern").(string); set {
			re, err := regexp.Compile(p)
			if err != nil {
				return v, false, false
			}
			if !re.MatchString(t) {
				return v, false, true
			}
		}
	}
	o, isObject := v.(*object)
	if !isObject {
		return v, true, true
	}
	props, _ := get("properties").(*object)
	if props != nil {
		for _, k := range props.keys {
			of, isSchema := props.cells[k].v.(*object)
			if !isSchema {
				return v, false, false
			}
			if x, there := o.get(k); !there || x == any(undefined) {
				if d, has := of.get("default"); has && r.fill {
					o.set(k, d)
				}
			}
		}
	}
	if l, isList := get("required").(*list); isList {
		for _, k := range l.items {
			if x, there := o.get(show(k)); !there || x == any(undefined) {
				return v, false, true
			}
		}
	}
	if props == nil {
		return v, true, true
	}
	if get("additionalProperties") == false {
		for _, k := range slices.Clone(o.keys) {
			switch {
			case props.cells[k] != nil:
			case r.remove:
				o.remove(k)
			default:
				return v, false, true
			}
		}
	}
	for _, k := range props.keys {
		x, there := o.get(k)
		if !there || x == any(undefined) {
			continue
		}
		now, fit, ok := m.fits(props.cells[k].v.(*object), x, r, depth+1)
		if !ok || !fit {
			return v, fit, ok
		}
		o.set(k, now)
	}
	return v, true, true
}

// ofKind is a value as a type of JSON Schema wants it (Ajv 8, "Coercion rules").
func ofKind(kind string, v any, coerce bool) (now any, fit bool) {
	switch x := v.(type) {
	case *object:
		return v, kind == "object"
	case *list:
		return v, kind == "array"
	case string:
		if kind == "string" || !coerce {
			return v, kind == "string"
		}
		switch kind {
		case "number", "integer":
			n, ok := toNumber(x)
			return n, ok && x != "" && !math.IsNaN(n) && (kind == "number" || n == math.Trunc(n))
		case "boolean":
			return x == "true", x == "true" || x == "false"
		case "null":
			return nil, x == ""
		}
	case float64:
		switch {
		case kind == "number", kind == "integer" && x == math.Trunc(x):
			return v, true
		case kind == "string" && coerce:
			return number(x), true
		case kind == "boolean" && coerce:
			return x == 1, x == 0 || x == 1
		}
	case bool:
		switch {
		case kind == "boolean":
			return v, true
		case kind == "string" && coerce:
			return strconv.FormatBool(x), true
		case coerce && (kind == "number" || kind == "integer"):
			n := 0.0
			if x {
				n = 1
			}
			return n, true
		}
	case nil:
		switch {
		case kind == "null":
			return v, true
		case kind == "string" && coerce:
			return "", true
		case coerce && (kind == "number" || kind == "integer"):
			return 0.0, true
		case coerce && kind == "boolean":
			return false, true
		}
	}
	return v, false
}

// compiled is the function that Ajv makes of a schema.
func (m *machine) compiled(ajv *opaque, schema any) (any, bool, error) {
	s, ok := schema.(*object)
	if !ok {
		return nil, false, nil
	}
	var r schemaRules
	if len(ajv.args) > 0 {
		if o, ok := ajv.args[0].(*object); ok {
			on := func(k string) bool { v, _ := o.get(k); yes, _ := truth(v, false); return yes }
			r = schemaRules{on("coerceTypes"), on("useDefaults"), on("removeAdditional")}
		}
	}
	return &function{native: func(m *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
		data := first(args)
		o, isObject := data.(*object)
		_, env := data.(*envMap)
		if env {
			o = m.envObject(false)
		}
		if o == nil || !isObject && !env {
			return nil, giveUp("what a schema is applied to")
		}
		_, fit, ok := m.fits(s, o, r, 0)
		if !ok {
			return nil, giveUp("a schema")
		}
		if env {
			for _, k := range o.keys {
				m.env.put(k, show(o.cells[k].v))
			}
		}
		return fit, nil
	}}, true, nil
}

// envSchema is what env-schema and the plugin of Fastify built on it make of the
// environment (env-schema 6, "Usage"); it throws where that is not as it should be.
func (m *machine) envSchema(options any) (any, bool, error) {
	opts, ok := options.(*object)
	if !ok {
		return nil, false, nil
	}
	given, _ := opts.get("schema")
	s, ok := given.(*object)
	if !ok || s.cells["properties"] == nil {
		return nil, false, nil
	}
	if v, _ := opts.get("dotenv"); v != any(undefined) && v != false {
		if v == true {
			v = undefined
		}
		if _, done, err := m.dotenvConfig(v); err != nil || !done {
			return nil, done, err
		}
	}
	data := newObject()
	if v, _ := opts.get("env"); v != false {
		data = m.envObject(false)
	}
	more, _ := opts.get("data")
	all := []any{more}
	if l, ok := more.(*list); ok {
		all = l.items
	}
	for _, x := range all {
		switch x := x.(type) {
		case undef, *envMap:
		case *object:
			for _, k := range x.keys {
				data.set(k, x.cells[k].v)
			}
		default:
			return nil, false, nil
		}
	}
	closed := s.with(map[string]any{"additionalProperties": false})
	_, fit, ok := m.fits(closed, data, schemaRules{true, true, true}, 0)
	if !ok {
		return nil, true, giveUp("a schema")
	}
	if !fit {
		return nil, true, raise("Error", "env is not as its schema wants it: "+strings.Join(data.keys, " "))
	}
	return data, true, nil
}
