package document

import (
	"bytes"
	"errors"
	"regexp"
	"strconv"
	"strings"
	"sync"

	"github.com/tailscale/hujson"

	"ubique/core/place"
)

var hujsonPlace = sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(`line (\d+), column (\d+): (.*)$`) })

// JSON reads a JSON document (RFC 8259). With comments set, comments and
// trailing commas are allowed, as in configuration files of many tools.
func JSON(name string, data []byte, lines *place.Lines, comments bool) (*Node, error) {
	src := newSource(name, lines)
	skipped := 0
	if bytes.HasPrefix(data, []byte("\xef\xbb\xbf")) {
		skipped = 3
	}
	if at := deepAt(data[skipped:], maxNesting); at >= 0 {
		return nil, src.fail(skipped+at, "nested deeper than %d levels: not read", maxNesting)
	}
	v, err := hujson.Parse(data[skipped:])
	if err != nil {
		off := len(data)
		text := err.Error()
		if m := hujsonPlace().FindStringSubmatch(text); m != nil {
			line, _ := strconv.Atoi(m[1])
			col, _ := strconv.Atoi(m[2])
			off = lineByte(data[skipped:], line, col) + skipped
			text = m[3]
		}
		text = strings.TrimPrefix(text, "hujson: ")
		return nil, src.fail(off, "not valid JSON: %s", text)
	}
	if !comments && !v.IsStandard() {
		off := nonStandard(data)
		return nil, src.fail(off, "not valid JSON: a comment or a comma before a closing bracket is not allowed here")
	}
	return fromJSON(src, &v, data, skipped), nil
}

const maxNesting = 500

// deepAt gives the offset at which brackets nest deeper than limit, or -1.
func deepAt(data []byte, limit int) int {
	depth, str := 0, false
	for i := 0; i < len(data); i++ {
		switch c := data[i]; {
		case str && c == '\\':
			i++
		case c == '"':
			str = !str
		case str:
		case c == '{' || c == '[':
			if depth++; depth > limit {
				return i
			}
		case c == '}' || c == ']':
			depth--
		}
	}
	return -1
}

func lineByte(data []byte, line, col int) int {
	off := 0
	for ; line > 1; line-- {
		i := bytes.IndexByte(data[off:], '\n')
		if i < 0 {
			return len(data)
		}
		off += i + 1
	}
	return min(off+max(0, col-1), len(data))
}

// nonStandard finds the first comment or trailing comma.
func nonStandard(data []byte) int {
	str := false
	comma := -1
	for i := 0; i < len(data); i++ {
		switch c := data[i]; {
		case str && c == '\\':
			i++
		case c == '"':
			str, comma = !str, -1
		case str:
		case c == '/':
			return i
		case c == ',':
			comma = i
		case (c == '}' || c == ']') && comma >= 0:
			return comma
		case c > ' ':
			comma = -1
		}
	}
	return 0
}

func fromJSON(src *source, v *hujson.Value, data []byte, shift int) *Node {
	off, end := v.StartOffset+shift, v.EndOffset+shift
	switch x := v.Value.(type) {
	case hujson.Literal:
		switch x.Kind() {
		case '"':
			return src.node(String, x.String(), off, end)
		case 't', 'f':
			return src.node(Bool, string(x), off, end)
		case '0':
			return src.node(Number, string(x), off, end)
		}
		return src.node(Null, "", off, end)
	case *hujson.Object:
		n := src.node(Map, "", off, end)
		n.Kids = make([]*Node, 0, len(x.Members))
		for i := range x.Members {
			m := &x.Members[i]
			kid := fromJSON(src, &m.Value, data, shift)
			if lit, ok := m.Name.Value.(hujson.Literal); ok {
				kid.Key = lit.String()
			}
			kid.keyOff, kid.keyEnd = int32(m.Name.StartOffset+shift), int32(m.Name.EndOffset+shift)
			n.Kids = append(n.Kids, kid)
		}
		return n
	case *hujson.Array:
		n := src.node(List, "", off, end)
		n.Kids = make([]*Node, 0, len(x.Elements))
		for i := range x.Elements {
			n.Kids = append(n.Kids, fromJSON(src, &x.Elements[i], data, shift))
		}
		return n
	}
	return src.node(Null, "", off, end)
}

// AsError gives the place-knowing error inside err, if there is one.
func AsError(err error) (*Error, bool) {
	var e *Error
	return e, errors.As(err, &e)
}
