package trace

import (
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"math"
	"strconv"
	"strings"
)

// jsBytes is a Buffer of Node.js that holds a text (Node.js 24 documentation,
// "Buffer").
func jsBytes(t string) *object {
	o := jsMethods("Buffer", map[string]func(*machine, []any, spot) (any, error){
		"toString": func(_ *machine, args []any, _ spot) (any, error) {
			switch enc, _ := first(args).(string); strings.ToLower(enc) {
			case "", "utf8", "utf-8", "ascii", "latin1":
				return t, nil
			case "base64":
				return base64.StdEncoding.EncodeToString([]byte(t)), nil
			case "hex":
				return hex.EncodeToString([]byte(t)), nil
			}
			return dontKnow("bytes as text"), nil
		},
	})
	for i := range min(len(t), 64) {
		o.set(strconv.Itoa(i), float64(t[i]))
	}
	for name, size := range map[string]int{"readUInt8": 1, "readUInt16BE": 2, "readUInt32BE": 4} {
		o.class.methods.set(name, &function{name: name, native: func(_ *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
			return jsRead([]byte(t), args, size)
		}})
	}
	o.set("length", float64(len(t)))
	return o
}

// jsFormat is util.format for texts and numbers.
func jsFormat(t string, args []any) (string, bool) {
	var b strings.Builder
	next := 0
	for i := 0; i < len(t); i++ {
		if t[i] != '%' || i+1 == len(t) {
			b.WriteByte(t[i])
			continue
		}
		i++
		switch {
		case t[i] == '%':
			b.WriteByte('%')
		case next >= len(args):
			b.WriteString(t[i-1 : i+1])
		case t[i] == 's':
			b.WriteString(show(args[next]))
			next++
		case t[i] == 'd' || t[i] == 'i' || t[i] == 'f':
			n, _ := toNumber(args[next])
			b.WriteString(show(n))
			next++
		default:
			return "", false
		}
	}
	for ; next < len(args); next++ {
		b.WriteString(" " + show(args[next]))
	}
	return b.String(), true
}

// jsonText is what JSON.stringify makes of a value, without the blanks that it may be
// told to add; ok is false where something in it is not known.
func (m *machine) jsonText(v any, depth int) (text string, ok bool) {
	if depth > 20 || m.use(1) != nil {
		return "", false
	}
	switch v := v.(type) {
	case nil:
		return "null", true
	case undef, *function:
		return "", true
	case bool, integer:
		return show(v), true
	case float64:
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return "null", true
		}
		return show(v), true
	case string:
		b, err := json.Marshal(v)
		return strings.NewReplacer(`\u003c`, "<", `\u003e`, ">", `\u0026`, "&").Replace(string(b)), err == nil
	case *list:
		parts := make([]string, len(v.items))
		for i, x := range v.items {
			t, ok := m.jsonText(x, depth+1)
			if !ok {
				return "", false
			}
			if parts[i] = t; t == "" {
				parts[i] = "null"
			}
		}
		return "[" + strings.Join(parts, ",") + "]", true
	case *envMap:
		return m.jsonText(m.envObject(false), depth+1)
	case *object:
		if v.class != nil && (v.class.builtin || m.method(v, "toJSON") != nil) {
			return "", false
		}
		var parts []string
		for _, k := range jsOrder(v.keys) {
			if strings.HasPrefix(k, "\x00") || strings.HasPrefix(k, "#") {
				continue
			}
			t, ok := m.jsonText(v.cells[k].v, depth+1)
			if !ok {
				return "", false
			}
			if t != "" {
				name, _ := json.Marshal(k)
				parts = append(parts, string(name)+":"+t)
			}
		}
		return "{" + strings.Join(parts, ",") + "}", true
	}
	return "", false
}
