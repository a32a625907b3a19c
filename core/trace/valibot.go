package trace

import "strings"

// What the library valibot makes of data (valibot 0.42 and 1, "API"): its schemas are
// those of zod, put together from outside.

// valibotActions are the actions that stand in a pipe, by the steps of zod that do the
// same.
var valibotActions = map[string]string{
	"transform": "transform", "integer": "int", "finite": "finite", "safeInteger": "int", "minValue": "gte", "maxValue": "lte", "gtValue": "gt", "ltValue": "lt", "multipleOf": "multipleOf",
	"minLength": "min", "maxLength": "max", "length": "length", "nonEmpty": "nonempty", "regex": "regex", "startsWith": "startsWith", "endsWith": "endsWith", "includes": "includes",
	"trim": "trim", "toLowerCase": "toLowerCase", "toUpperCase": "toUpperCase", "email": "email", "url": "url", "uuid": "uuid", "check": "refine",
	"description": "describe", "title": "describe", "brand": "brand", "readonly": "readonly", "metadata": "meta",
}

// valibotSchemas are the schemas, by those of zod.
var valibotSchemas = map[string]string{
	"string": "string", "number": "number", "boolean": "boolean", "bigint": "bigint", "date": "date", "any": "any", "unknown": "unknown", "undefined": "undefined", "null": "null",
	"object": "object", "strictObject": "strictObject", "looseObject": "looseObject", "picklist": "enum", "enum": "nativeEnum", "enum_": "nativeEnum", "literal": "literal", "union": "union", "array": "array", "record": "record",
}

// valibotCall is a function of the package; done is false where it is none.
func (m *machine) valibotCall(f *opaque, args []any, at spot) (any, bool, error) {
	name, ok := strings.CutPrefix(f.path, "valibot.")
	if !ok {
		return nil, false, nil
	}
	name = strings.TrimPrefix(name, "v.")
	of := zodOf(first(args))
	around := func(kind string, args ...any) (any, bool, error) {
		return m.zodSeen(&zodSchema{kind: kind, of: of, args: args, shape: of.shape}).obj, true, nil
	}
	switch name {
	case "pipe", "pipeAsync":
		if of == nil {
			return nil, false, nil
		}
		for _, a := range args[1:] {
			step := zodOf(a)
			if step == nil {
				return nil, false, nil
			}
			made := &zodSchema{kind: "pipe", of: of, args: []any{a}, shape: of.shape}
			if step.action {
				made.kind, made.args = step.kind, step.args
			}
			of = m.zodSeen(made)
		}
		return of.obj, true, nil
	case "optional", "nullish", "nullable", "undefinedable", "exactOptional":
		if of == nil {
			return nil, false, nil
		}
		if len(args) > 1 {
			return around("prefault", args[1])
		}
		return around(strings.Replace(strings.Replace(name, "undefinedable", "optional", 1), "exactOptional", "optional", 1))
	case "fallback":
		if of == nil || len(args) < 2 {
			return nil, false, nil
		}
		return around("catch", args[1])
	case "parse", "parseAsync", "safeParse", "safeParseAsync", "is":
		if of == nil || len(args) < 2 {
			return nil, false, nil
		}
		return m.valibotParse(name, of, args[1], at)
	}
	if kind, ok := valibotSchemas[name]; ok {
		return m.zodMade(kind, args, false).obj, true, nil
	}
	if kind, ok := valibotActions[name]; ok {
		return m.zodSeen(&zodSchema{kind: kind, args: args, action: true}).obj, true, nil
	}
	return nil, false, nil
}

// valibotParse is what a schema makes of data: the data, or an error or an object that
// says so.
func (m *machine) valibotParse(name string, s *zodSchema, data any, at spot) (any, bool, error) {
	v, fails, err := m.zodParse(s, data, at, 0)
	if err != nil {
		return nil, true, err
	}
	if name == "is" {
		return fails == nil, true, nil
	}
	var out any = v
	switch {
	case strings.HasPrefix(name, "safeParse"):
		o := newObject()
		o.set("typed", fails == nil)
		o.set("success", fails == nil)
		o.set("output", v)
		if fails != nil {
			o.set("issues", &list{items: []any{zodError(fails)}})
		}
		out = o
	case fails != nil && strings.HasSuffix(name, "Async"):
		return &promise{err: &thrown{zodError(fails)}}, true, nil
	case fails != nil:
		return nil, true, &thrown{zodError(fails)}
	}
	if strings.HasSuffix(name, "Async") {
		out = &promise{v: out}
	}
	return out, true, nil
}
