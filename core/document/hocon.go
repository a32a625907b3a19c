package document

import (
	"strings"

	"ubique/core/place"
)

// HOCON reads the settings that Ktor and Play keep in application.conf: nested
// braces, dotted keys, = or :, comments with # and //, ${NAME} and ${?NAME}
// inside values (HOCON specification of the Typesafe config library, 2026-11).
// The keys come out dotted, in the order of the file, one that is set twice
// twice: what a later one does to an earlier one is for the reader to say.
// Substitutions stay in the text; lists and included files are stepped over.
func HOCON(name string, data []byte, lines *place.Lines) *Node {
	src := newSource(name, lines)
	root := src.node(Map, "", 0, len(data))
	var path []string
	var depths []int // how many names each brace added
	text := string(data)
	i := 0
	blank := func() {
		for i < len(text) {
			switch {
			case strings.ContainsRune(" \t\r\n,;", rune(text[i])):
				i++
			case text[i] == '#' || strings.HasPrefix(text[i:], "//"):
				for i < len(text) && text[i] != '\n' {
					i++
				}
			default:
				return
			}
		}
	}
	for {
		blank()
		if i >= len(text) || len(root.Kids) > 10_000 {
			return root
		}
		if text[i] == '{' {
			i++
			depths = append(depths, 0)
			continue
		}
		if text[i] == '}' {
			i++
			if n := len(depths); n > 0 {
				path = path[:len(path)-depths[n-1]]
				depths = depths[:n-1]
			}
			continue
		}
		from := i
		for i < len(text) && !strings.ContainsRune("={:\n}", rune(text[i])) && !strings.HasPrefix(text[i:], "+=") {
			i++
		}
		key := strings.Trim(strings.TrimSpace(text[from:i]), `"`)
		if i >= len(text) || text[i] == '\n' || text[i] == '}' || key == "" {
			if i < len(text) && text[i] != '}' {
				i++
			}
			continue
		}
		names := strings.Split(key, ".")
		if text[i] != '{' {
			for i < len(text) && strings.ContainsRune("=:+ \t", rune(text[i])) {
				i++
			}
		}
		if i < len(text) && text[i] == '{' {
			i++
			path = append(path, names...)
			depths = append(depths, len(names))
			continue
		}
		start := i
		if i < len(text) && text[i] == '[' {
			for depth := 0; i < len(text); i++ {
				if text[i] == '[' {
					depth++
				} else if text[i] == ']' {
					if depth--; depth == 0 {
						i++
						break
					}
				}
			}
			continue
		}
		var b strings.Builder
	value:
		for i < len(text) {
			switch c := text[i]; {
			case c == '"':
				end := strings.IndexByte(text[i+1:], '"')
				if end < 0 {
					i = len(text)
					break value
				}
				b.WriteString(text[i+1 : i+1+end])
				i += end + 2
			case strings.HasPrefix(text[i:], "${"):
				end := strings.IndexByte(text[i:], '}')
				if end < 0 {
					i = len(text)
					break value
				}
				b.WriteString(text[i : i+end+1])
				i += end + 1
			case c == '\n' || c == ',' || c == '}' || c == '#' || strings.HasPrefix(text[i:], "//"):
				break value
			default:
				b.WriteByte(c)
				i++
			}
		}
		v := src.node(String, strings.TrimSpace(b.String()), start, start+len(strings.TrimRight(text[start:i], " \t\r")))
		v.Key, v.keyOff, v.keyEnd = strings.Join(append(path[:len(path):len(path)], names...), "."), int32(from), int32(from+len(key))
		root.Kids = append(root.Kids, v)
	}
}
