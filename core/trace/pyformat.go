package trace

import (
	"math"
	"strconv"
	"strings"

	"ubique/core/code"
)

// Texts that Python makes of values (Python 3.14 library reference, "Format String
// Syntax", "Format Specification Mini-Language", "printf-style String Formatting",
// str and repr of built-in types).

// pyText1 is str(v), or with quote set repr(v); what is not known is opaque.
func (m *machine) pyText1(v any, quote bool, at spot) (any, error) {
	if err := m.step(); err != nil {
		return nil, err
	}
	if m.depth++; m.depth > maxDepth {
		return nil, spent("nested too deep")
	}
	defer func() { m.depth-- }()
	switch v := v.(type) {
	case nil, bool, integer:
		return pyShow(v), nil
	case float64:
		return pyFloat(v), nil
	case string:
		if quote {
			return pyQuoted(v), nil
		}
		return v, nil
	case pyPath:
		if quote {
			return dontKnow("a path as text"), nil
		}
		return string(v), nil
	case *opaque:
		return dontKnow("a text with " + v.String()), nil
	case *content:
		if quote {
			return dontKnow("a file as text"), nil
		}
		return v.text, nil
	case *list:
		if v.gen {
			return dontKnow("a generator as text"), nil
		}
		var parts []string
		for _, x := range v.items {
			t, err := m.pyText1(x, true, at)
			if err != nil {
				return nil, err
			}
			s, ok := t.(string)
			if !ok {
				return t, nil
			}
			parts = append(parts, s)
		}
		switch inside := strings.Join(parts, ", "); {
		case v.set && len(parts) == 1:
			return "{" + inside + "}", nil
		case v.set: // in no order that could be told
			return dontKnow("a set as text"), nil
		case v.tuple && len(parts) == 1:
			return "(" + inside + ",)", nil
		case v.tuple:
			return "(" + inside + ")", nil
		default:
			return "[" + inside + "]", nil
		}
	case *object:
		if v.class != nil && !v.dict {
			fn := m.method(v, "__str__")
			if fn == nil || quote {
				if f := m.method(v, "__repr__"); f != nil || quote {
					fn = f
				}
			}
			if fn != nil {
				return m.call(fn, v, nil, nil, at)
			}
			if msg, ok := v.get("message"); ok && !quote {
				return m.pyText1(msg, false, at)
			}
			if v.class.enum {
				if name, ok := v.get("name"); ok && !quote && outer(v.class) != nil && !strings.HasSuffix(outer(v.class).path, "StrEnum") && !strings.HasSuffix(outer(v.class).path, "IntEnum") {
					return v.class.name + "." + show(name), nil
				}
			}
			return dontKnow("an object as text"), nil
		}
		var parts []string
		for _, k := range v.keys {
			if strings.HasPrefix(k, "\x00") {
				return dontKnow("a dictionary as text"), nil
			}
			t, err := m.pyText1(v.cells[k].v, true, at)
			if err != nil {
				return nil, err
			}
			s, ok := t.(string)
			if !ok {
				return t, nil
			}
			parts = append(parts, pyQuoted(k)+": "+s)
			if _, isNum := atoi(k); isNum { // keys lose what they are
				return dontKnow("a dictionary as text"), nil
			}
		}
		return "{" + strings.Join(parts, ", ") + "}", nil
	}
	return dontKnow("something as text"), nil
}

// pyFloat writes a number with a fraction as repr() does.
func pyFloat(f float64) string {
	switch {
	case math.IsInf(f, 1):
		return "inf"
	case math.IsInf(f, -1):
		return "-inf"
	case math.IsNaN(f):
		return "nan"
	}
	if a := math.Abs(f); a != 0 && (a >= 1e16 || a < 1e-4) {
		return strconv.FormatFloat(f, 'e', -1, 64)
	}
	s := strconv.FormatFloat(f, 'f', -1, 64)
	if !strings.Contains(s, ".") {
		s += ".0"
	}
	return s
}

// pyQuoted writes a text as repr() does.
func pyQuoted(s string) string {
	q := "'"
	if strings.Contains(s, "'") && !strings.Contains(s, `"`) {
		q = `"`
	}
	r := strings.NewReplacer(`\`, `\\`, "\n", `\n`, "\r", `\r`, "\t", `\t`, q, `\`+q)
	return q + r.Replace(s) + q
}

// formatSpec is what stands behind the colon of a field.
type formatSpec struct {
	fill         rune
	align        byte
	sign         byte
	alt          bool
	comma        byte
	width, prec  int // prec is -1 where there is none
	kind         byte
	zeros, given bool
}

func specOf(text string) (f formatSpec, ok bool) {
	f.prec, f.fill = -1, ' '
	r := []rune(text)
	if len(r) > 1 && strings.ContainsRune("<>=^", r[1]) {
		f.fill, f.align, f.given, r = r[0], byte(r[1]), true, r[2:]
	} else if len(r) > 0 && strings.ContainsRune("<>=^", r[0]) {
		f.align, r = byte(r[0]), r[1:]
	}
	if len(r) > 0 && strings.ContainsRune("+- ", r[0]) {
		f.sign, r = byte(r[0]), r[1:]
	}
	if len(r) > 0 && r[0] == '#' {
		f.alt, r = true, r[1:]
	}
	if len(r) > 0 && r[0] == '0' {
		f.zeros, r = true, r[1:]
	}
	num := func() (n int, any bool) {
		for len(r) > 0 && r[0] >= '0' && r[0] <= '9' && n < 1000 {
			n, any, r = n*10+int(r[0]-'0'), true, r[1:]
		}
		return n, any
	}
	f.width, _ = num()
	if len(r) > 0 && (r[0] == ',' || r[0] == '_') {
		f.comma, r = byte(r[0]), r[1:]
	}
	if len(r) > 0 && r[0] == '.' {
		r = r[1:]
		n, any := num()
		if !any {
			return f, false
		}
		f.prec = n
	}
	if len(r) == 1 && r[0] < 0x80 {
		f.kind, r = byte(r[0]), nil
	}
	return f, len(r) == 0 && f.width < 1000 && f.prec < 100
}

// pyFormat is format(v, spec) of texts and numbers; ok is false where that is not
// followed.
func pyFormat(v any, spec string) (text string, ok bool) {
	f, ok := specOf(spec)
	if !ok {
		return "", false
	}
	if b, isBool := v.(bool); isBool && spec != "" {
		v = integer(map[bool]int{true: 1}[b])
	}
	sign, body := "", ""
	align := byte('>')
	grouped := func(s string, every int) string {
		if f.comma == 0 {
			return s
		}
		whole, rest := s, ""
		if i := strings.IndexAny(s, ".e"); i >= 0 {
			whole, rest = s[:i], s[i:]
		}
		for i := len(whole) - every; i > 0; i -= every {
			whole = whole[:i] + string(f.comma) + whole[i:]
		}
		return whole + rest
	}
	float := func(x float64) bool {
		if math.IsInf(x, 0) || math.IsNaN(x) {
			return false
		}
		if math.Signbit(x) {
			sign, x = "-", -x
		}
		prec := f.prec
		if prec < 0 {
			prec = 6
		}
		switch f.kind {
		case 'f', 'F':
			body = grouped(strconv.FormatFloat(x, 'f', prec, 64), 3)
		case 'e', 'E':
			body = strconv.FormatFloat(x, f.kind, prec, 64)
		case '%':
			body = strconv.FormatFloat(x*100, 'f', prec, 64) + "%"
		case 0:
			if f.prec >= 0 {
				return false
			}
			body = grouped(pyFloat(x), 3)
		default:
			return false
		}
		return true
	}
	switch v := v.(type) {
	case string:
		if f.kind != 0 && f.kind != 's' || f.sign != 0 || f.alt || f.comma != 0 || f.align == '=' {
			return "", false
		}
		body, align = v, '<'
		if r := []rune(v); f.prec >= 0 && f.prec < len(r) {
			body = string(r[:f.prec])
		}
	case integer:
		if strings.IndexByte("fFeE%", f.kind) >= 0 && f.kind != 0 {
			if !float(float64(v)) {
				return "", false
			}
			break
		}
		n := int64(v)
		if n < 0 {
			sign = "-"
		}
		u := uint64(max(n, -n))
		base := map[byte]int{0: 10, 'd': 10, 'n': 10, 'x': 16, 'X': 16, 'o': 8, 'b': 2}[f.kind]
		if base == 0 || f.prec >= 0 {
			return "", false
		}
		body = strconv.FormatUint(u, base)
		if f.kind == 'X' {
			body = strings.ToUpper(body)
		}
		body = grouped(body, map[bool]int{true: 3, false: 4}[base == 10])
		if f.alt && base != 10 {
			sign += "0" + string(f.kind)
		}
	case float64:
		if !float(v) {
			return "", false
		}
	case nil, bool:
		if spec != "" {
			return "", false
		}
		return pyShow(v), true
	default:
		return "", false
	}
	if !strings.HasPrefix(sign, "-") && (f.sign == '+' || f.sign == ' ') {
		sign = string(f.sign) + sign
	}
	if _, isText := v.(string); f.zeros && !f.given {
		if f.fill = '0'; !isText && f.align == 0 {
			align = '='
			if f.comma != 0 && f.width > len(sign)+len(body) {
				return "", false
			}
		}
	}
	if f.align != 0 {
		align = f.align
	}
	n := f.width - len([]rune(sign+body))
	if n <= 0 {
		return sign + body, true
	}
	fill := func(n int) string { return strings.Repeat(string(f.fill), n) }
	switch align {
	case '<':
		return sign + body + fill(n), true
	case '^':
		return fill(n/2) + sign + body + fill(n-n/2), true
	case '=':
		return sign + fill(n) + body, true
	}
	return fill(n) + sign + body, true
}

// pyField makes the text of a field: what !r or !s and a specification make of a
// value.
func (m *machine) pyField(v any, conversion byte, spec string, at spot) (any, error) {
	if o, ok := v.(*opaque); ok {
		return dontKnow("a text with " + o.String()), nil
	}
	if o, ok := v.(*object); ok && conversion == 0 && o.class != nil && !o.dict {
		if f := m.method(o, "__format__"); f != nil {
			return m.call(f, o, []any{spec}, nil, at)
		}
	}
	var err error
	switch conversion {
	case 'r', 'a':
		v, err = m.pyText1(v, true, at)
	case 's':
		v, err = m.pyText1(v, false, at)
	case 0:
		switch v.(type) {
		case string, integer, float64, bool, nil:
		default:
			if spec == "" {
				v, err = m.pyText1(v, false, at)
			}
		}
	default:
		return nil, giveUp("a format that is not followed")
	}
	if err != nil || !known(v) {
		return v, err
	}
	text, ok := pyFormat(v, spec)
	if !ok {
		return dontKnow("a format that is not followed"), nil
	}
	return text, nil
}

// specified makes the text of a value in an f-string: what stands behind it, up to
// the end of its braces, says how.
func (m *machine) specified(k *code.Node, v any, s *scope) (any, error) {
	src := s.module.file.Src
	end := int(k.End)
	for end >= 0 && end < len(src) && (src[end] == ' ' || src[end] == ')') {
		end++
	}
	if end < 0 || end >= len(src) {
		return m.pyField(v, 0, "", spot{s.module.file, k})
	}
	rest := string(src[end:min(len(src), end+64)])
	before, conversion := "", byte(0)
	if strings.HasPrefix(rest, "=") {
		start := int(k.Off)
		for start > 0 && src[start-1] != '{' {
			start--
		}
		gap := len(rest) - len(strings.TrimLeft(rest[1:], " ")) // blanks behind it are shown too
		before, rest = string(src[start:end+gap]), rest[gap:]
		conversion = 'r'
		if strings.HasPrefix(rest, ":") {
			conversion = 0
		}
	}
	if strings.HasPrefix(rest, "!") && len(rest) > 1 {
		conversion, rest = rest[1], rest[2:]
	}
	spec := ""
	if strings.HasPrefix(rest, ":") {
		var ok bool
		if spec, _, ok = strings.Cut(rest[1:], "}"); !ok || strings.Contains(spec, "{") {
			return nil, giveUp("a format that is not followed")
		}
	}
	t, err := m.pyField(v, conversion, spec, spot{s.module.file, k})
	if text, ok := t.(string); ok && err == nil {
		return before + text, nil
	}
	return t, err
}

// formatted is str.format.
func (m *machine) formatted(format string, args []any, keys map[string]any, s *scope, at spot) (any, error) {
	next := 0
	var fill func(b string, depth int) (any, error)
	fill = func(b string, depth int) (any, error) {
		var out strings.Builder
		for i := 0; i < len(b); i++ {
			switch {
			case depth == 0 && (strings.HasPrefix(b[i:], "{{") || strings.HasPrefix(b[i:], "}}")):
				out.WriteByte(b[i])
				i++
			case b[i] == '}':
				return nil, raise("ValueError", "Single '}' encountered in format string")
			case b[i] == '{':
				end, open := i, 0
				for ; end < len(b); end++ {
					if b[end] == '{' {
						open++
					} else if b[end] == '}' {
						if open--; open == 0 {
							break
						}
					}
				}
				if end >= len(b) || depth > 1 {
					return nil, raise("ValueError", "expected '}' before end of string")
				}
				field, spec, _ := strings.Cut(b[i+1:end], ":")
				i = end
				name, conv, _ := strings.Cut(field, "!")
				head := name
				if j := strings.IndexAny(name, ".["); j >= 0 {
					head, name = name[:j], name[j:]
				} else {
					name = ""
				}
				if head == "" {
					head = strconv.Itoa(next)
					next++
				}
				v, ok := keys[head]
				if n, isNum := atoi(head); isNum {
					if n < 0 || n >= len(args) {
						return nil, raise("IndexError", "Replacement index "+head+" out of range for positional args tuple")
					}
					v, ok = args[n], true
				}
				if !ok {
					return nil, raise("KeyError", head)
				}
				for name != "" {
					var err error
					if part := name[1:]; name[0] == '.' {
						j := strings.IndexAny(part, ".[")
						if j < 0 {
							j = len(part)
						}
						if !known(v) {
							return dontKnow("a part of what is not known"), nil
						}
						v, err = m.key(v, part[:j], s, at.n)
						name = part[j:]
					} else {
						k, more, ok := strings.Cut(part, "]")
						if !ok {
							return nil, raise("ValueError", "Missing ']' in format string")
						}
						if v, err = m.element(v, k, s, at); err == nil {
							name = more
						}
					}
					if err != nil {
						return nil, err
					}
				}
				if strings.Contains(spec, "{") {
					x, err := fill(spec, depth+1)
					if err != nil || !known(x) {
						return x, err
					}
					spec = x.(string)
				}
				conversion := byte(0)
				if conv != "" {
					conversion = conv[0]
				}
				t, err := m.pyField(v, conversion, spec, at)
				if err != nil || !known(t) {
					return t, err
				}
				out.WriteString(show(t))
				if out.Len() > maxText {
					return nil, spent("a text that is too long")
				}
			default:
				out.WriteByte(b[i])
			}
		}
		return out.String(), nil
	}
	return fill(format, 0)
}

// element is an element of a list or a dictionary that a format names.
func (m *machine) element(v any, k string, s *scope, at spot) (any, error) {
	n, isNum := atoi(k)
	switch v := v.(type) {
	case *list:
		if !isNum || n < 0 || n >= len(v.items) {
			return nil, raise("IndexError", "list index out of range")
		}
		return v.items[n], nil
	case *object:
		if v.dict || v.class == nil {
			if c := v.cells[k]; c != nil {
				return c.v, nil
			}
			return nil, raise("KeyError", k)
		}
	case *envMap:
		if t, ok := m.lookup(k, at); ok {
			return t, nil
		}
		return nil, raise("KeyError", k)
	}
	return dontKnow("an element that a format names"), nil
}

// percent is the operator % of texts.
func (m *machine) percent(format string, args any, at spot) (any, error) {
	given := []any{args}
	if l, ok := args.(*list); ok && l.tuple {
		given = l.items
	}
	named := false
	var out strings.Builder
	for i := 0; i < len(format); i++ {
		if format[i] != '%' {
			out.WriteByte(format[i])
			continue
		}
		if i++; i == len(format) {
			return nil, raise("ValueError", "incomplete format")
		}
		var v any
		from := false
		if format[i] == '(' {
			name, rest, ok := strings.Cut(format[i+1:], ")")
			if !ok {
				return nil, raise("ValueError", "incomplete format key")
			}
			x, err := m.element(args, name, nil, at)
			if err != nil {
				return nil, err
			}
			v, from, named = x, true, true
			i = len(format) - len(rest)
		}
		spec := ""
		left, zero := false, false
		for ; i < len(format) && strings.IndexByte("-0+ #", format[i]) >= 0; i++ {
			switch format[i] {
			case '-':
				left = true
			case '0':
				zero = true
			default:
				if !strings.ContainsRune(spec, rune(format[i])) {
					spec += string(format[i])
				}
			}
		}
		start := i
		for ; i < len(format) && strings.IndexByte("0123456789.", format[i]) >= 0; i++ {
		}
		size := format[start:i]
		if i >= len(format) {
			return nil, raise("ValueError", "incomplete format")
		}
		verb := format[i]
		if verb == '%' {
			out.WriteByte('%')
			continue
		}
		if !from {
			if len(given) == 0 {
				return nil, raise("TypeError", "not enough arguments for format string")
			}
			v, given = given[0], given[1:]
		}
		if o, ok := v.(*opaque); ok {
			return dontKnow("a text with " + o.String()), nil
		}
		align := ">"
		if left {
			align = "<"
		} else if zero && strings.IndexByte("diuxXofFeE", verb) >= 0 {
			align = ""
			size = "0" + size
		}
		switch verb {
		case 's', 'r', 'a':
			t, err := m.pyText1(v, verb != 's', at)
			if err != nil || !known(t) {
				return t, err
			}
			v, verb = t, 's'
		case 'd', 'i', 'u':
			if f, ok := v.(float64); ok {
				v = integer(int64(f))
			}
			if _, ok := v.(string); ok {
				return nil, raise("TypeError", "%d format: a real number is required, not str")
			}
			verb = 'd'
		case 'x', 'X', 'o', 'f', 'F', 'e', 'E':
			if _, ok := v.(string); ok {
				return nil, raise("TypeError", "a real number is required, not str")
			}
		default:
			return nil, giveUp("a format that is not followed")
		}
		text, ok := pyFormat(v, align+spec+size+string(verb))
		if !ok {
			return nil, giveUp("a format that is not followed")
		}
		out.WriteString(text)
		if out.Len() > maxText {
			return nil, spent("a text that is too long")
		}
	}
	if _, isMap := args.(*object); len(given) > 0 && !named && !isMap {
		return nil, raise("TypeError", "not all arguments converted during string formatting")
	}
	return out.String(), nil
}
