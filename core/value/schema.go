package value

import (
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// schema reads the libraries that declare variables in one object: envalid's
// cleanEnv, zod's object().parse and convict (documentation of envalid 8, zod
// 4 and convict 6).
func (e *Eval) schema(fn *Value, args []*Value, s *code.Scope, at place.Span) *Value {
	switch {
	case fn.Text == "envalid.cleanEnv" && len(args) > 1 && args[1].Kind == Object:
		o := &Value{Kind: Object, At: at}
		for i, k := range args[1].Keys {
			spec := args[1].Kids[i]
			v := &Value{Kind: Env, Text: k, Unset: Raises, At: spec.At}
			var r *Value = v
			if d := option(spec, "default"); d != nil {
				r = op("unset", false, spec.At, v, d)
			}
			switch {
			case strings.HasPrefix(spec.Text, "envalid.port"):
				r = op("port", false, spec.At, r)
			case strings.HasPrefix(spec.Text, "envalid.num"):
				r = op("strict", false, spec.At, r)
			}
			o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, r)
		}
		return o
	case strings.HasSuffix(fn.Text, ".parse") && len(args) == 1 && args[0].Kind == EnvMap:
		shape := shapeOf(fn)
		if shape == nil {
			return nil
		}
		o := &Value{Kind: Object, At: at}
		for i, k := range shape.Keys {
			o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, zodField(k, shape.Kids[i]))
		}
		return o
	case fn.Text == "convict" && len(args) == 1 && args[0].Kind == Object:
		return &Value{Kind: External, Text: "convict()", Kids: args, At: at}
	case fn.Text == "convict().get" && len(args) == 1 && args[0].Kind == Str && fn.Recv != nil && len(fn.Recv.Kids) == 1:
		v := fn.Recv.Kids[0]
		for p := range strings.SplitSeq(args[0].Text, ".") {
			if v = v.Get(p); v == nil {
				return nil
			}
		}
		name, def := v.Get("env"), v.Get("default")
		if name == nil || name.Kind != Str {
			return def
		}
		r := &Value{Kind: Env, Text: name.Text, At: v.At}
		if def != nil {
			r = op("unset", false, v.At, r, def)
		}
		if f := v.Get("format"); f != nil && f.Kind == Str {
			switch f.Text {
			case "port":
				r = op("port", false, v.At, r)
			case "int", "nat":
				r = op("strict", false, v.At, r)
			}
		}
		return r
	case strings.HasPrefix(fn.Text, "env-var.get()"):
		return envVar(fn, args, at)
	}
	return nil
}

// option gives a property of the last argument of a call that made a value.
func option(v *Value, name string) *Value {
	if v == nil || v.Kind != External || len(v.Kids) == 0 {
		return nil
	}
	return v.Kids[len(v.Kids)-1].Get(name)
}

// shapeOf walks back from schema.parse to the object given to z.object.
func shapeOf(fn *Value) *Value {
	for v := fn; v != nil; v = v.Recv {
		if strings.HasSuffix(v.Text, ".object()") && len(v.Kids) == 1 && v.Kids[0].Kind == Object {
			return v.Kids[0]
		}
	}
	return nil
}

func zodField(name string, spec *Value) *Value {
	v := &Value{Kind: Env, Text: name, Unset: Raises, At: spec.At}
	var r *Value = v
	numeric := strings.Contains(spec.Text, "coerce.number")
	for x := spec; x != nil; x = x.Recv {
		if strings.HasSuffix(x.Text, ".default()") && len(x.Kids) == 1 {
			r = op("unset", false, spec.At, v, x.Kids[0])
		}
		if strings.HasSuffix(x.Text, ".optional()") && r == v {
			v.Unset = ReadsUndef
		}
		if strings.HasSuffix(x.Text, ".transform()") && len(x.Kids) == 1 && (x.Kids[0].Text == "Number" || x.Kids[0].Kind == Func) {
			numeric = true
		}
	}
	if numeric {
		r = op("strict", false, spec.At, op("Number", false, spec.At, r))
	}
	return r
}

// envVar reads the chain env.get('X').default(1).asPortNumber().
func envVar(fn *Value, args []*Value, at place.Span) *Value {
	if !strings.Contains(fn.Text, ".as") {
		return nil
	}
	var name, def *Value
	required := false
	for v := fn; v != nil; v = v.Recv {
		switch {
		case v.Text == "env-var.get()" && len(v.Kids) > 0:
			name = v.Kids[0]
		case strings.HasSuffix(v.Text, ".default()") && len(v.Kids) == 1:
			def = v.Kids[0]
		case strings.HasSuffix(v.Text, ".required()"):
			required = true
		}
	}
	if name == nil || name.Kind != Str {
		return nil
	}
	v := &Value{Kind: Env, Text: name.Text, At: at}
	if required {
		v.Unset = Raises
	}
	r := v
	if def != nil {
		r = op("unset", false, at, v, def)
	}
	switch {
	case strings.HasSuffix(fn.Text, "asPortNumber"):
		r = op("port", false, at, r)
	case strings.HasSuffix(fn.Text, "asInt"):
		r = op("strict", false, at, r)
	}
	return r
}
