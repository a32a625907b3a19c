package document

import (
	"strings"

	"ubique/core/place"
)

// Directive is a setting of a web server: a name and its arguments.
type Directive struct {
	Name string
	Args []string
	At   place.Span
}

// Has reports whether an argument stands there.
func (d Directive) Has(arg string) bool {
	for _, a := range d.Args {
		if a == arg {
			return true
		}
	}
	return false
}

// Directives reads settings in which each ends with a semicolon or opens a
// block in braces, as nginx writes them (nginx, "Beginner's Guide",
// "Configuration File's Structure"). Blocks are gone through; their own
// directive comes first.
func Directives(name string, data []byte, lines *place.Lines) []Directive {
	var list []Directive
	var words []string
	from := -1
	text := string(data)
	flush := func(end int) {
		if len(words) > 0 {
			list = append(list, Directive{words[0], words[1:], lines.Span(name, from, end)})
		}
		words, from = nil, -1
	}
	for i := 0; i < len(text) && len(list) < 10_000; {
		switch c := text[i]; {
		case c == '#':
			for i < len(text) && text[i] != '\n' {
				i++
			}
		case c == ';' || c == '}' || c == '{':
			flush(i)
			i++
		case c == '"' || c == '\'':
			end := strings.IndexByte(text[i+1:], c)
			if end < 0 {
				return list
			}
			if from < 0 {
				from = i
			}
			words = append(words, text[i+1:i+1+end])
			i += end + 2
		case c == ' ' || c == '\t' || c == '\r' || c == '\n':
			i++
		default:
			start := i
			for i < len(text) && !strings.ContainsRune(" \t\r\n;", rune(text[i])) && (text[i] != '{' || i > start && text[i-1] == '$') && (text[i] != '}' || strings.Contains(text[start:i], "${")) {
				i++
			}
			if i == start {
				i++
				continue
			}
			if from < 0 {
				from = start
			}
			words = append(words, text[start:i])
		}
	}
	return list
}

// Lined reads settings of one line each, as Apache writes them (Apache HTTP
// Server 2.4, "Configuration Files").
func Lined(name string, data []byte, lines *place.Lines) []Directive {
	var list []Directive
	off := 0
	for raw := range strings.SplitSeq(string(data), "\n") {
		start := off
		off += len(raw) + 1
		text := strings.TrimSpace(raw)
		if text == "" || text[0] == '#' || text[0] == '<' {
			continue
		}
		lead := len(raw) - len(strings.TrimLeft(raw, " \t"))
		words := strings.Fields(text)
		for i, w := range words {
			words[i] = strings.Trim(w, `"`)
		}
		list = append(list, Directive{words[0], words[1:], lines.Span(name, start+lead, start+lead+len(text))})
	}
	return list
}
