package value

import (
	"strings"

	"ubique/core/place"
)

// Fill puts together a text with holes in it. A hole begins with open and ends
// with the sign that closes it, which may stand inside in pairs: ${a:${b}}. With
// no sign a hole is a name, in braces or not: $NAME, ${NAME}. What stands in a
// hole is given to fill. A hole without an end is text.
func Fill(s, open, closing string, at place.Span, fill func(inside string) *Value) *Value {
	var parts []*Value
	for s != "" {
		i := strings.Index(s, open)
		if i < 0 {
			break
		}
		rest, inside := s[i+len(open):], ""
		if closing == "" {
			braces := strings.HasPrefix(rest, "{")
			if braces {
				rest = rest[1:]
			}
			inside = rest[:nameEnd(rest)]
			if rest = rest[len(inside):]; braces {
				rest = strings.TrimPrefix(rest, "}")
			}
		} else {
			end := closed(rest, open[len(open)-1], closing[0])
			if end < 0 {
				break
			}
			inside, rest = rest[:end], rest[end+1:]
		}
		if i > 0 {
			parts = append(parts, Text(s[:i], at))
		}
		parts = append(parts, fill(inside))
		s = rest
	}
	if s != "" || len(parts) == 0 {
		parts = append(parts, Text(s, at))
	}
	return Concat(parts...)
}

// nameEnd is where the name of a variable at the start of a text ends.
func nameEnd(s string) int {
	for i := range len(s) {
		c := s[i]
		if c != '_' && (c < '0' || c > '9') && (c < 'A' || c > 'Z') && (c < 'a' || c > 'z') {
			return i
		}
	}
	return len(s)
}

// closed is where a bracket that is open at the start of a text is closed; -1
// for nowhere.
func closed(s string, opening, closing byte) int {
	depth := 1
	for i := range len(s) {
		switch s[i] {
		case opening:
			depth++
		case closing:
			if depth--; depth == 0 {
				return i
			}
		}
	}
	return -1
}
