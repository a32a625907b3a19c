package container

import (
	"fmt"
	"strings"

	"ubique/core/command"
)

// node is one instruction as it stands in the file: its word, its arguments
// and the lines it covers. What it means is for the reader above.
type node struct {
	word       string
	args       []string // ENV and LABEL: name, value, name, value, …
	flags      []string // --name=value
	json       bool     // the arguments were a JSON list
	start, end int      // lines
}

// syntaxError is an instruction that cannot be read, and its line.
type syntaxError struct {
	line int
	text string
}

func (e *syntaxError) Error() string { return e.text }

// parse splits a container file into instructions: parser directives, line
// continuations, comments between them, here-documents, flags, and the shell
// and exec forms (Dockerfile reference, "Format", "Parser directives",
// "Here-Documents").
func parse(data []byte) ([]*node, error) {
	lines := strings.Split(strings.TrimPrefix(string(data), "\ufeff"), "\n")
	escape := escapeOf(lines)
	var list []*node
	for i := 0; i < len(lines); i++ {
		text := strings.TrimSpace(lines[i])
		if text == "" || text[0] == '#' {
			continue
		}
		n := &node{start: i + 1}
		var b strings.Builder
		for ; ; i++ {
			part, more := cutContinuation(lines[i], escape)
			b.WriteString(part)
			if !more || i+1 >= len(lines) {
				break
			}
			// Comments and empty lines between continued lines are left out.
			for i+1 < len(lines) && skipped(lines[i+1]) {
				i++
			}
			if i+1 >= len(lines) {
				break
			}
			b.WriteByte(' ')
		}
		word, rest, _ := strings.Cut(strings.TrimSpace(b.String()), " ")
		if j := strings.IndexByte(word, '\t'); j >= 0 {
			word, rest = word[:j], word[j+1:]+" "+rest
		}
		n.word = strings.ToLower(word)
		if n.word == "run" || n.word == "copy" || n.word == "add" {
			end, err := n.heredocs(lines, i+1, &rest)
			if err != nil {
				return nil, err
			}
			i = end - 1
		}
		n.end = min(i+1, len(lines))
		n.read(strings.TrimSpace(rest), escape)
		list = append(list, n)
	}
	return list, nil
}

// escapeOf reads the escape directive, which stands among the comments at
// the top of the file.
func escapeOf(lines []string) byte {
	for _, l := range lines {
		l = strings.TrimSpace(l)
		if !strings.HasPrefix(l, "#") {
			break
		}
		name, v, ok := strings.Cut(strings.TrimSpace(l[1:]), "=")
		if !ok || strings.ContainsAny(strings.TrimSpace(name), " \t") {
			break
		}
		if strings.EqualFold(strings.TrimSpace(name), "escape") && strings.TrimSpace(v) == "`" {
			return '`'
		}
	}
	return '\\'
}

func skipped(line string) bool {
	t := strings.TrimSpace(line)
	return t == "" || t[0] == '#'
}

func cutContinuation(line string, escape byte) (string, bool) {
	t := strings.TrimRight(line, " \t\r")
	if t != "" && t[len(t)-1] == escape && !(len(t) > 1 && t[len(t)-2] == escape) {
		return t[:len(t)-1], true
	}
	return t, false
}

// heredocs takes the here-documents that the instruction opens off the lines
// that follow. The text of the first becomes the command where the
// instruction is nothing else; next is the line to go on from, counted from 0.
func (n *node) heredocs(lines []string, next int, rest *string) (int, error) {
	open := next
	for _, w := range strings.Fields(*rest) {
		tag, ok := strings.CutPrefix(w, "<<")
		if !ok || strings.HasPrefix(tag, "<") {
			continue
		}
		tag, tabs := strings.CutPrefix(tag, "-")
		tag = strings.Trim(tag, `"'`)
		if tag == "" || strings.ContainsAny(tag, "()$;|&") {
			continue
		}
		var body []string
		for ; ; next++ {
			if next >= len(lines) {
				return 0, &syntaxError{open, fmt.Sprintf("the here-document %s has no end", tag)}
			}
			l := strings.TrimRight(lines[next], "\r")
			if tabs {
				l = strings.TrimLeft(l, "\t")
			}
			if l == tag {
				next++
				break
			}
			body = append(body, l)
		}
		if n.word == "run" && strings.TrimSpace(*rest) == w {
			*rest = strings.Join(body, "\n")
		}
	}
	return next, nil
}

// read takes the flags and the arguments of an instruction apart.
func (n *node) read(rest string, escape byte) {
	switch n.word {
	case "from", "run", "copy", "add", "healthcheck":
		for strings.HasPrefix(rest, "--") {
			flag, after, _ := strings.Cut(rest, " ")
			n.flags = append(n.flags, flag)
			rest = strings.TrimLeft(after, " \t")
		}
	}
	switch n.word {
	case "run", "cmd", "entrypoint", "shell", "copy", "add", "volume":
		if strings.HasPrefix(rest, "[") {
			if list, ok := command.Strings(rest); ok {
				n.args, n.json = list, true
				return
			}
		}
	}
	switch n.word {
	case "run", "cmd", "entrypoint", "healthcheck", "onbuild", "maintainer":
		if rest != "" {
			n.args = []string{rest}
		}
	case "env", "label":
		n.args = pairs(rest, escape)
	default:
		n.args = words(rest, escape)
	}
}

// words splits at spaces outside quotes; the quotes stay.
func words(s string, escape byte) []string {
	var list []string
	var b strings.Builder
	quote := byte(0)
	flush := func() {
		if b.Len() > 0 {
			list = append(list, b.String())
			b.Reset()
		}
	}
	for i := 0; i < len(s); i++ {
		switch c := s[i]; {
		case c == escape && i+1 < len(s) && quote != '\'':
			b.WriteByte(c)
			i++
			b.WriteByte(s[i])
		case quote != 0:
			if c == quote {
				quote = 0
			}
			b.WriteByte(c)
		case c == '"' || c == '\'':
			quote = c
			b.WriteByte(c)
		case c == ' ' || c == '\t':
			flush()
		default:
			b.WriteByte(c)
		}
	}
	flush()
	return list
}

// pairs reads NAME=value … and the old form NAME value.
func pairs(s string, escape byte) []string {
	list := words(s, escape)
	if len(list) == 0 {
		return nil
	}
	if !strings.Contains(list[0], "=") {
		return []string{list[0], strings.TrimSpace(strings.TrimPrefix(s, list[0]))}
	}
	var out []string
	for _, w := range list {
		name, v, _ := strings.Cut(w, "=")
		out = append(out, name, plain(v, escape))
	}
	return out
}

// plain takes quotes and escapes off a value.
func plain(s string, escape byte) string {
	if !strings.ContainsAny(s, "\"'"+string(escape)) {
		return s
	}
	var b strings.Builder
	quote := byte(0)
	for i := 0; i < len(s); i++ {
		switch c := s[i]; {
		case c == escape && i+1 < len(s) && quote != '\'':
			i++
			if s[i] == '$' { // stays escaped: it is no variable
				b.WriteByte(escape)
			}
			b.WriteByte(s[i])
		case c == quote:
			quote = 0
		case quote == 0 && (c == '"' || c == '\''):
			quote = c
		default:
			b.WriteByte(c)
		}
	}
	return b.String()
}
