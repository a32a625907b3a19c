package trace

import (
	"strconv"
	"strings"
)

// verbs puts values into a format as printf does (POSIX.1-2024, "File Format
// Notation"; PHP manual, sprintf; Java SE 25, java.util.Formatter; Ruby 3.4, "Format
// Specifications"). What a verb is given comes from of, as a text or a number; ok is
// false where the format is not followed.
func verbs(format string, args []any, of func(verb byte, v any) (any, bool)) (text string, ok bool) {
	var b strings.Builder
	next := 0
	for i := 0; i < len(format); i++ {
		if format[i] != '%' {
			b.WriteByte(format[i])
			continue
		}
		if i++; i == len(format) {
			return "", false
		}
		if format[i] == '%' {
			b.WriteByte('%')
			continue
		}
		which := -1
		if end := strings.IndexByte(format[i:], '$'); end > 0 && strings.Trim(format[i:i+end], "0123456789") == "" {
			n, err := strconv.Atoi(format[i : i+end])
			if err != nil || n < 1 {
				return "", false
			}
			which, i = n-1, i+end+1
		}
		left, zero, fill, sign, comma, alt := false, false, " ", "", "", ""
		for done := false; !done && i < len(format); {
			switch c := format[i]; c {
			case '-':
				left = true
			case '0':
				zero = true
			case '+', ' ':
				sign = string(c)
			case ',':
				comma = ","
			case '#':
				alt = "#"
			case '\'':
				if i+1 >= len(format) {
					return "", false
				}
				i++
				fill = string(format[i])
			default:
				done = true
				continue
			}
			i++
		}
		start := i
		for i < len(format) && format[i] >= '0' && format[i] <= '9' {
			i++
		}
		width := format[start:i]
		prec := ""
		if i < len(format) && format[i] == '.' {
			start = i
			for i++; i < len(format) && format[i] >= '0' && format[i] <= '9'; i++ {
			}
			prec = format[start:i]
		}
		if i >= len(format) || len(width) > 3 || len(prec) > 3 {
			return "", false
		}
		verb := format[i]
		if which < 0 {
			which = next
			next++
		}
		if which >= len(args) {
			return "", false
		}
		v, fits := of(verb, args[which])
		if !fits {
			return "", false
		}
		align := ">"
		if left {
			align = "<"
		}
		spec := ""
		switch v.(type) {
		case string:
			if verb == 's' || verb == 'S' {
				spec = fill + align + width + prec
			} else {
				spec = fill + align + width
			}
		case integer, float64:
			switch verb {
			case 'i', 'u':
				verb = 'd'
			case 'd', 'x', 'X', 'o', 'b', 'f', 'F':
			default:
				return "", false
			}
			if spec = fill + align; zero && !left {
				spec = ""
				width = "0" + width
			}
			spec += sign + alt + width + comma + prec + string(verb)
		default:
			return "", false
		}
		part, ok := pyFormat(v, spec)
		if !ok || b.Len()+len(part) > maxText {
			return "", false
		}
		b.WriteString(part)
	}
	return b.String(), true
}
