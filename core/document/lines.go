package document

import (
	"strings"

	"ubique/core/place"
)

// Dotenv reads NAME=value lines with optional export, quotes and comments, as
// dotenv libraries do. Lines that are none of this are stepped over.
func Dotenv(name string, data []byte, lines *place.Lines) *Node {
	src := newSource(name, lines)
	root := src.node(Map, "", 0, len(data))
	for i := 0; i < len(data); {
		end := i
		for end < len(data) && data[end] != '\n' {
			end++
		}
		next := end + 1
		line := string(data[i:end])
		start := i
		i = next
		trimmed := strings.TrimLeft(line, " \t")
		if rest, ok := strings.CutPrefix(trimmed, "export "); ok {
			trimmed = strings.TrimLeft(rest, " \t")
		}
		eq := strings.IndexByte(trimmed, '=')
		if trimmed == "" || trimmed[0] == '#' || eq <= 0 {
			continue
		}
		key := strings.TrimRight(trimmed[:eq], " \t")
		if strings.ContainsAny(key, " \t\"'") {
			continue
		}
		keyOff := start + len(line) - len(trimmed)
		value := trimmed[eq+1:]
		lead := len(value) - len(strings.TrimLeft(value, " \t"))
		off := keyOff + eq + 1 + lead
		value = strings.TrimRight(value[lead:], " \t\r")
		if value != "" && (value[0] == '"' || value[0] == '\'') {
			q := value[0]
			rest := data[off+1:]
			if j := closing(rest, q); j >= 0 {
				n := src.node(String, unquote(string(rest[:j]), q), off, off+j+2)
				n.Key, n.keyOff, n.keyEnd = key, int32(keyOff), int32(keyOff+len(key))
				root.Kids = append(root.Kids, n)
				if k := off + 1 + j; k >= next {
					for i = k; i < len(data) && data[i] != '\n'; i++ {
					}
					i++
				}
				continue
			}
		}
		if j := strings.Index(value, " #"); j >= 0 {
			value = strings.TrimRight(value[:j], " \t")
		}
		n := src.node(String, value, off, off+len(value))
		n.Key, n.keyOff, n.keyEnd = key, int32(keyOff), int32(keyOff+len(key))
		root.Kids = append(root.Kids, n)
	}
	return root
}

func closing(rest []byte, q byte) int {
	for j := 0; j < len(rest); j++ {
		if rest[j] == '\\' && q == '"' {
			j++
		} else if rest[j] == q {
			return j
		}
	}
	return -1
}

func unquote(s string, q byte) string {
	if q == '\'' || !strings.Contains(s, `\`) {
		return s
	}
	return strings.NewReplacer(`\n`, "\n", `\r`, "\r", `\t`, "\t", `\"`, `"`, `\\`, `\`).Replace(s)
}

// INI reads sections of key = value (or key: value) lines, with values that
// go on in indented lines, as setup.cfg and systemd units write them. Keys
// before the first section stand at the root: that is a properties file.
func INI(name string, data []byte, lines *place.Lines) *Node {
	src := newSource(name, lines)
	root := src.node(Map, "", 0, len(data))
	at := root
	var last *Node
	off := 0
	for raw := range strings.SplitSeq(string(data), "\n") {
		start := off
		off += len(raw) + 1
		line := strings.TrimRight(raw, "\r")
		text := strings.TrimSpace(line)
		if text == "" || text[0] == '#' || text[0] == ';' {
			continue
		}
		lead := len(line) - len(strings.TrimLeft(line, " \t"))
		if text[0] == '[' && strings.HasSuffix(text, "]") {
			key := text[1 : len(text)-1]
			last = nil
			if at = root.Get(key); at == nil {
				at = src.node(Map, "", start+lead, start+lead+len(text))
				at.Key, at.keyOff, at.keyEnd = key, int32(start+lead+1), int32(start+lead+1+len(key))
				root.Kids = append(root.Kids, at)
			}
			continue
		}
		if lead > 0 && last != nil {
			last.Text = strings.TrimPrefix(last.Text+"\n"+text, "\n")
			last.end = int32(start + lead + len(text))
			continue
		}
		eq := strings.IndexAny(text, "=:")
		if eq <= 0 {
			continue
		}
		key := strings.TrimSpace(text[:eq])
		value := strings.TrimSpace(text[eq+1:])
		voff := start + lead + eq + 1 + len(text[eq+1:]) - len(strings.TrimLeft(text[eq+1:], " \t"))
		last = src.node(String, value, voff, voff+len(value))
		last.Key, last.keyOff, last.keyEnd = key, int32(start+lead), int32(start+lead+len(key))
		at.Kids = append(at.Kids, last)
	}
	return root
}

// Line is one line of a plain list file.
type Line struct {
	Text string
	At   place.Span
}

// PlainLines gives the lines of a file that are not empty and not comments
// (from # at the start of a line or after a space), with their places.
func PlainLines(name string, data []byte, lines *place.Lines) []Line {
	var list []Line
	for n := 1; n <= lines.Count(); n++ {
		line := lines.Text(n)
		if n == 1 {
			line = strings.TrimPrefix(line, "\ufeff")
		}
		body := line
		if i := strings.Index(body, " #"); i >= 0 {
			body = body[:i]
		}
		text := strings.TrimSpace(body)
		if text == "" || text[0] == '#' {
			continue
		}
		col := len([]rune(line)) - len([]rune(strings.TrimLeft(line, " \t"))) + 1
		list = append(list, Line{text, place.Span{File: name, Line: n, Col: col, EndLine: n, EndCol: col + len([]rune(text))}})
	}
	return list
}
