package code

import (
	"bytes"
	"sync"

	"ubique/core/place"
)

// matters are texts without which a file holds nothing but its imports that
// anybody asks for: calls that listen, reads of the environment, settings,
// secrets. They are looked for without regard to letter case.
var matters = [][]byte{
	[]byte("listen"), []byte("serve"), []byte("run"), []byte("env"), []byte("config"), []byte("setting"), []byte("port'"), []byte("port\""),
	[]byte("debug"), []byte("middleware"), []byte("fastapi("), []byte("starlette("), []byte("flask("), []byte("argv"), []byte("argument"),
	[]byte("secret"), []byte("passw"), []byte("passphrase"), []byte("token"), []byte("apikey"), []byte("api_key"), []byte("privatekey"), []byte("private_key"),
	[]byte("accesskey"), []byte("access_key"), []byte("signingkey"), []byte("signing_key"), []byte("encryption"), []byte("masterkey"), []byte("master_key"),
	[]byte("hmac"), []byte("jwt"), []byte("session"), []byte("cookie"), []byte("__getattr__"), []byte("globals()"),
}

// Matters is the cheap look at bytes that tells files that must be read from
// files whose imports are enough: one pass, whatever the number of texts.
func Matters(src []byte) bool {
	m := finder()
	state := uint16(0)
	for _, c := range src {
		state = m.next[state][m.class[c]]
		if state == found {
			return true
		}
	}
	return false
}

// automaton finds any of several texts in one pass (A. Aho, M. Corasick,
// "Efficient string matching", 1975), with letters of both cases as one.
type automaton struct {
	class [256]uint8 // bytes that no text has are one class
	next  [][]uint16
}

const found = 0xffff

var finder = sync.OnceValue(func() *automaton {
	m := &automaton{}
	classes := 1
	for _, text := range matters {
		for _, c := range text {
			if m.class[c] == 0 {
				m.class[c] = uint8(classes)
				if c >= 'a' && c <= 'z' {
					m.class[c-'a'+'A'] = uint8(classes)
				}
				classes++
			}
		}
	}
	row := func() []uint16 { return make([]uint16, classes) }
	m.next = [][]uint16{row()}
	for _, text := range matters {
		at := uint16(0)
		for i, c := range text {
			k := m.class[c]
			switch to := m.next[at][k]; {
			case to == found:
			case i == len(text)-1:
				m.next[at][k] = found
			case to == 0:
				m.next = append(m.next, row())
				m.next[at][k] = uint16(len(m.next) - 1)
			}
			if at = m.next[at][k]; at == found {
				break
			}
		}
	}
	// Where a text goes no further, the longest end of it that begins another
	// goes on: fail links, worked into the rows level by level.
	fail := make([]uint16, len(m.next))
	var queue []uint16
	for _, to := range m.next[0] {
		if to != 0 && to != found {
			queue = append(queue, to)
		}
	}
	for len(queue) > 0 {
		at := queue[0]
		queue = queue[1:]
		for k, to := range m.next[at] {
			back := m.next[fail[at]][k]
			switch {
			case to == 0 || back == found:
				m.next[at][k] = back
			case to != found:
				fail[to] = back
				queue = append(queue, to)
			}
		}
	}
	return m
})

// Skim reads only the imports of a file. It gives nil where an import stands under a condition or inside something, so
// that the file must be read as a whole. The file it gives has no body, no
// calls and no bindings.
func Skim(lang Language, name string, src []byte, lines *place.Lines) *File {
	f := &File{Name: name, Lang: lang, Src: src, Lines: lines, Skimmed: true, Top: &Scope{}}
	f.Top.File = f
	var toks []tok
	switch lang {
	case JavaScript, TypeScript, JSX:
		toks = lexJS(src[:lastImportJS(src)], lang)
	case Python:
		toks = lexPython(src[:lastImportPython(src)])
	default:
		return nil
	}
	defer release(toks)
	r := &reader{lang: lang, src: src, toks: toks}
	ok := false
	if lang == Python {
		ok = r.skimPython(f)
	} else {
		ok = r.skimJS(f)
	}
	if !ok {
		return nil
	}
	return f
}

// lastImportJS gives the end of the last thing that may be an import: what
// stands behind it needs no tokens. Tokens are made from left to right, so that
// those before it are the same as of the whole file.
func lastImportJS(src []byte) int {
	last := max(lastIndex(src, "require"), lastIndex(src, "import"))
	for at := max(last, 0); ; at += len("export") {
		i := bytes.Index(src[at:], []byte("export"))
		if i < 0 {
			break
		}
		at += i
		rest := bytes.TrimLeft(src[at+len("export"):], " \t\r\n")
		if len(rest) > 0 && (rest[0] == '{' || rest[0] == '*') || bytes.HasPrefix(rest, []byte("type")) {
			last = at
		}
	}
	if last < 0 {
		return 0
	}
	// Up to the line end behind the text that follows.
	i := last + bytes.IndexAny(src[last:], "'\"`")
	if i < last {
		return len(src)
	}
	end := bytes.IndexByte(src[i+1:], src[i])
	if end < 0 {
		return len(src)
	}
	end += i + 2
	if line := bytes.IndexByte(src[end:], '\n'); line >= 0 {
		return end + line + 1
	}
	return len(src)
}

// lastIndex is bytes.LastIndex by looking forward, which is much faster.
func lastIndex(src []byte, word string) int {
	last := -1
	for at := 0; ; at += len(word) {
		i := bytes.Index(src[at:], []byte(word))
		if i < 0 {
			return last
		}
		at += i
		last = at
	}
}

// lastImportPython does the same for Python: up to the end of the logical line
// that holds the last import.
func lastImportPython(src []byte) int {
	last := lastIndex(src, "import")
	if last < 0 {
		return 0
	}
	depth := 0
	for i := last; i < len(src); i++ {
		switch src[i] {
		case '(', '[', '{':
			depth++
		case ')', ']', '}':
			depth--
		case '\n':
			if depth <= 0 && src[i-1] != '\\' && !(src[i-1] == '\r' && i > 1 && src[i-2] == '\\') {
				return i + 1
			}
		}
	}
	return len(src)
}

func (f *File) skimmed(n *Node) {
	if n == nil {
		return
	}
	if n.Is(Block) {
		for _, k := range n.Kids {
			f.skimmed(k)
		}
		return
	}
	if n.Is(Import) {
		f.Imports = append(f.Imports, Site{Node: n, Scope: f.Top})
	}
}

func (r *reader) skimPython(f *File) bool {
	indent, start := 0, true
	for r.cur().kind != tEOF {
		t := r.cur()
		switch {
		case t.kind == tIndent:
			indent++
		case t.kind == tDedent:
			indent--
		case t.kind == tNewline, t.kind == tPunct && t.text == ";":
			start = true
			r.pos++
			continue
		case t.kind == tName && start && (t.text == "import" || t.text == "from"):
			if indent > 0 {
				return false
			}
			f.skimmed(r.pyStatement())
			start = true
			continue
		case t.kind == tName && (t.text == "import" || t.text == "__import__" || t.text == "import_module"):
			return false // if x: import y
		}
		start = t.kind == tIndent || t.kind == tDedent
		r.pos++
	}
	return true
}

func (r *reader) skimJS(f *File) bool {
	depth := 0
	for r.cur().kind != tEOF {
		t, next := r.cur(), r.at(1)
		begins := r.pos == 0 || t.nl || r.toks[r.pos-1].kind == tPunct && (r.toks[r.pos-1].text == ";" || r.toks[r.pos-1].text == "}")
		member := r.pos > 0 && r.toks[r.pos-1].kind == tPunct && r.toks[r.pos-1].text == "."
		switch {
		case t.kind == tPunct:
			switch t.text {
			case "(", "[", "{":
				depth++
			case ")", "]", "}":
				depth--
			}
		case t.kind != tName || member:
		case (t.text == "require" || t.text == "import") && next.kind == tPunct && next.text == "(":
			assigned := r.pos > 0 && r.toks[r.pos-1].kind == tPunct && r.toks[r.pos-1].text == "="
			arg := r.at(2)
			if depth > 0 || arg.kind != tString || len(arg.parts) > 0 || !assigned && !begins {
				return false
			}
			f.Imports = append(f.Imports, Site{Node: &Node{Kind: Import, Name: arg.text, Off: arg.off, End: arg.end, Flag: Static}, Scope: f.Top})
		case t.text == "require":
			return false // require.resolve, or handed on
		case t.text == "import" && begins && depth == 0 && !(next.kind == tPunct && next.text == "."):
			n := r.jsImport()
			if n.Is(Bind) { // import x = require("m")
				call := n.Kid(1)
				if !call.Is(Call) || !call.Kid(1).Is(String) {
					return false
				}
				arg := call.Kids[1]
				n = &Node{Kind: Import, Name: arg.Name, Off: arg.Off, End: arg.End, Flag: Static}
			}
			f.skimmed(n)
			continue
		case t.text == "export" && begins && depth == 0 && next.kind == tPunct && (next.text == "*" || next.text == "{"):
			f.skimmed(r.jsExport())
			continue
		case t.text == "export" && begins && depth == 0 && next.kind == tName && next.text == "type" && r.at(2).text == "{":
			f.skimmed(r.jsExport())
			continue
		}
		r.pos++
	}
	return true
}
