package code

import (
	"strconv"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"
)

type tokKind uint8

const (
	tEOF tokKind = iota
	tName
	tNumber
	tString
	tTemplate // parts: text and token lists
	tRegex
	tPunct
	tMarkup  // JSX; parts hold the expressions
	tNewline // end of a logical line
	tIndent
	tDedent
)

type part struct {
	text     string
	toks     []tok
	off, end int32
}

type tok struct {
	kind     tokKind
	nl       bool // a line end stands before it
	text     string
	parts    []part
	off, end int32
}

const maxNesting = 200

type lexer struct {
	src   []byte
	text  string // src, so that tokens are pieces of it and no copies
	pos   int
	lang  Language
	toks  []tok
	nl    bool
	depth int

	heads []bool // for each open bracket: it belongs to an if, while or for
	head  bool   // the last closing bracket did
}

// spare are token lists to use again: one is needed a file, and only until
// the file has been read.
var spare = sync.Pool{New: func() any { return new([]tok) }}

func newLexer(src []byte, lang Language) *lexer {
	l := &lexer{src: src, text: string(src), lang: lang, toks: (*spare.Get().(*[]tok))[:0]}
	if cap(l.toks) < len(src)/6 {
		l.toks = make([]tok, 0, len(src)/4+16)
	}
	return l
}

// release gives the token list back; nothing may hold on to it. It is not
// cleared: that would cost more than the few texts that it keeps alive.
func release(toks []tok) {
	spare.Put(&toks)
}

func (l *lexer) peek(n int) byte {
	if l.pos+n < len(l.src) {
		return l.src[l.pos+n]
	}
	return 0
}

func (l *lexer) emit(k tokKind, off int, text string) {
	l.toks = append(l.toks, tok{kind: k, nl: l.nl, text: text, off: int32(off), end: int32(l.pos)})
	l.nl = false
}

func isIdentStart(c byte) bool {
	return c == '_' || c == '$' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= utf8.RuneSelf
}

func isIdent(c byte) bool { return isIdentStart(c) || c >= '0' && c <= '9' }

func (l *lexer) ident() string {
	start := l.pos
	for l.pos < len(l.src) && isIdent(l.src[l.pos]) {
		if l.src[l.pos] >= utf8.RuneSelf {
			r, n := utf8.DecodeRune(l.src[l.pos:])
			if r == 0xfeff || unicode.IsSpace(r) || !unicode.IsPrint(r) && r != utf8.RuneError {
				if l.pos == start {
					l.pos += n
				}
				break
			}
			l.pos += n
			continue
		}
		l.pos++
	}
	return l.text[start:l.pos]
}

func (l *lexer) number() string {
	start := l.pos
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		if isIdent(c) || c == '.' || (c == '+' || c == '-') && l.pos > start && (l.src[l.pos-1] == 'e' || l.src[l.pos-1] == 'E') && l.src[start] != '0' {
			l.pos++
			continue
		}
		break
	}
	return l.text[start:l.pos]
}

// Operators, the longest first.
var jsOps = byFirst([]string{">>>=", "...", "===", "!==", "**=", "<<=", ">>=", "&&=", "||=", "??=", ">>>",
	"=>", "==", "!=", "<=", ">=", "&&", "||", "??", "?.", "++", "--", "+=", "-=", "*=", "/=", "%=", "&=", "|=", "^=", "**", "<<", ">>"})
var pyOps = byFirst([]string{"**=", "//=", ">>=", "<<=", "...", "->", ":=", "==", "!=", "<=", ">=", "<>", "+=", "-=", "*=", "/=", "%=", "&=", "|=", "^=", "@=", "**", "//", "<<", ">>"})

// byFirst groups operators by their first byte.
func byFirst(ops []string) (table [128][]string) {
	for _, op := range ops {
		table[op[0]] = append(table[op[0]], op)
	}
	return table
}

func (l *lexer) punct(ops *[128][]string) {
	start := l.pos
	for _, op := range ops[l.src[l.pos]&127] {
		if strings.HasPrefix(l.text[l.pos:], op) {
			if op == "?." && l.peek(2) >= '0' && l.peek(2) <= '9' {
				continue
			}
			l.pos += len(op)
			l.emit(tPunct, start, op)
			return
		}
	}
	l.pos++
	l.emit(tPunct, start, l.text[start:l.pos])
}

// lexJS makes tokens of JavaScript and TypeScript (ECMA-262, 2025).
func lexJS(src []byte, lang Language) []tok {
	l := newLexer(src, lang)
	if strings.HasPrefix(string(src[:min(2, len(src))]), "#!") {
		for l.pos < len(src) && src[l.pos] != '\n' {
			l.pos++
		}
	}
	l.js("")
	l.emit(tEOF, l.pos, "")
	return l.toks
}

// js lexes up to an unmatched closing bracket (when until is set) or the end.
func (l *lexer) js(until string) {
	braces := 0
	l.depth++
	defer func() { l.depth-- }()
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		switch {
		case c == '\n':
			l.nl = true
			l.pos++
		case c <= ' ':
			l.pos++
		case c == '/' && l.peek(1) == '/':
			for l.pos < len(l.src) && l.src[l.pos] != '\n' {
				l.pos++
			}
		case c == '/' && l.peek(1) == '*':
			l.pos += 2
			for l.pos < len(l.src) && !(l.src[l.pos] == '*' && l.peek(1) == '/') {
				if l.src[l.pos] == '\n' {
					l.nl = true
				}
				l.pos++
			}
			l.pos = min(l.pos+2, len(l.src))
		case c == '"' || c == '\'':
			l.jsString(c)
		case c == '`':
			l.jsTemplate()
		case c >= '0' && c <= '9' || c == '.' && l.peek(1) >= '0' && l.peek(1) <= '9':
			start := l.pos
			l.emit(tNumber, start, l.number())
		case isIdentStart(c) || c == '#' && isIdentStart(l.peek(1)):
			start := l.pos
			if c == '#' {
				l.pos++
			}
			name := l.ident()
			if name == "" {
				if l.pos == start {
					l.pos++
				}
				continue
			}
			if c == '#' {
				name = "#" + name
			}
			l.emit(tName, start, name)
		case c == '/' && l.regexAllowed():
			l.jsRegex()
		case c == '<' && l.lang == JSX && l.regexAllowed() && l.markupStart() && l.depth < maxNesting:
			l.markup()
		default:
			switch c {
			case '(':
				n := len(l.toks)
				l.heads = append(l.heads, n > 0 && l.toks[n-1].kind == tName && headed[l.toks[n-1].text] && !(n > 1 && l.toks[n-2].text == "."))
			case ')':
				if n := len(l.heads); n > 0 {
					l.head, l.heads = l.heads[n-1], l.heads[:n-1]
				}
			}
			if c == '{' {
				braces++
			}
			if c == '}' {
				if braces--; braces < 0 && until == "}" {
					return
				}
			}
			l.punct(&jsOps)
		}
	}
}

var beforeRegex = map[string]bool{"return": true, "typeof": true, "case": true, "in": true, "of": true, "delete": true, "void": true,
	"throw": true, "new": true, "else": true, "do": true, "await": true, "yield": true, "instanceof": true, "default": true, "export": true}

var headed = map[string]bool{"if": true, "while": true, "for": true, "with": true}

func (l *lexer) regexAllowed() bool {
	if len(l.toks) == 0 {
		return true
	}
	switch t := l.toks[len(l.toks)-1]; t.kind {
	case tName:
		return beforeRegex[t.text]
	case tPunct:
		return (t.text != ")" || l.head) && t.text != "]" && t.text != "++" && t.text != "--" && (t.text != "}" || l.nl)
	}
	return false
}

func (l *lexer) jsRegex() {
	start := l.pos
	class := false
	for l.pos++; l.pos < len(l.src); l.pos++ {
		switch c := l.src[l.pos]; {
		case c == '\\':
			l.pos++
		case c == '\n':
			l.emit(tRegex, start, "")
			return
		case c == '[':
			class = true
		case c == ']':
			class = false
		case c == '/' && !class:
			l.pos++
			l.ident()
			l.emit(tRegex, start, "")
			return
		}
	}
	l.pos = min(l.pos, len(l.src))
	l.emit(tRegex, start, "")
}

func (l *lexer) jsString(q byte) {
	start := l.pos
	if i := plainEnd(l.text[start+1:], q); i >= 0 {
		l.pos = start + i + 2
		l.emit(tString, start, l.text[start+1:l.pos-1])
		return
	}
	var b strings.Builder
	for l.pos++; l.pos < len(l.src); {
		c := l.src[l.pos]
		if c == q {
			l.pos++
			break
		}
		if c == '\n' {
			break
		}
		if c == '\\' {
			l.escape(&b)
			continue
		}
		b.WriteByte(c)
		l.pos++
	}
	l.emit(tString, start, b.String())
}

// plainEnd is where a quoted text ends that has neither an escape nor a line
// end in it; -1 for any other.
func plainEnd(s string, q byte) int {
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case q:
			return i
		case '\\', '\n':
			return -1
		}
	}
	return -1
}

// escape decodes one backslash sequence, the same in the languages read here.
func (l *lexer) escape(b *strings.Builder) {
	l.pos++
	c := l.peek(0)
	l.pos++
	hex := func(n int) {
		end := min(l.pos+n, len(l.src))
		if v, err := strconv.ParseUint(string(l.src[l.pos:end]), 16, 32); err == nil {
			b.WriteRune(rune(v))
			l.pos = end
		}
	}
	switch c {
	case 'n':
		b.WriteByte('\n')
	case 't':
		b.WriteByte('\t')
	case 'r':
		b.WriteByte('\r')
	case '0':
		b.WriteByte(0)
	case '\n':
	case 'x':
		hex(2)
	case 'u':
		if l.peek(0) == '{' {
			end := l.pos
			for end < len(l.src) && l.src[end] != '}' && end < l.pos+10 {
				end++
			}
			if v, err := strconv.ParseUint(string(l.src[l.pos+1:end]), 16, 32); err == nil {
				b.WriteRune(rune(v))
				l.pos = min(end+1, len(l.src))
			}
			return
		}
		hex(4)
	case 0:
		l.pos = min(l.pos, len(l.src))
	default:
		if (l.lang == Python || l.lang == PHP) && (c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z') { // no escape there
			b.WriteByte('\\')
		}
		b.WriteByte(c)
	}
}

func (l *lexer) jsTemplate() {
	start := l.pos
	t := tok{kind: tTemplate, nl: l.nl, off: int32(start)}
	l.nl = false
	var b strings.Builder
	from := l.pos + 1
	flush := func() {
		t.parts = append(t.parts, part{text: b.String(), off: int32(from), end: int32(l.pos)})
		b.Reset()
	}
	for l.pos++; l.pos < len(l.src); {
		c := l.src[l.pos]
		if c == '`' {
			flush()
			l.pos++
			break
		}
		if c == '\\' {
			l.escape(&b)
			continue
		}
		if c == '$' && l.peek(1) == '{' && l.depth < maxNesting {
			flush()
			l.pos += 2
			t.parts = append(t.parts, l.inner())
			from = l.pos
			continue
		}
		b.WriteByte(c)
		l.pos++
	}
	t.end = int32(min(l.pos, len(l.src)))
	l.toks = append(l.toks, t)
}

// inner lexes an expression up to its closing brace.
func (l *lexer) inner() part {
	saved := l.toks
	l.toks = nil
	p := part{off: int32(l.pos)}
	l.js("}")
	p.end = int32(l.pos)
	l.emit(tEOF, l.pos, "")
	p.toks = l.toks
	l.toks = saved
	if l.peek(0) == '}' {
		l.pos++
	}
	return p
}

func (l *lexer) markupStart() bool {
	c := l.peek(1)
	if c == '>' {
		return true
	}
	if !isIdentStart(c) {
		return false
	}
	// `<T,>(x) =>` and `<T extends U>(x) =>` are type parameters.
	i := l.pos + 1
	for i < len(l.src) && (isIdent(l.src[i]) || l.src[i] == '.' || l.src[i] == '-' || l.src[i] == ':') {
		i++
	}
	return i < len(l.src) && l.src[i] != ',' && !strings.HasPrefix(string(l.src[i:min(i+9, len(l.src))]), " extends ")
}

// markup steps over a JSX element and keeps the expressions in it.
func (l *lexer) markup() {
	start := l.pos
	t := tok{kind: tMarkup, nl: l.nl, off: int32(start)}
	l.nl = false
	open := 0
	for l.pos < len(l.src) {
		// At a tag.
		closing := l.peek(1) == '/'
		selfClosing := false
		l.pos++
	tag:
		for l.pos < len(l.src) {
			switch c := l.src[l.pos]; c {
			case '"', '\'':
				for l.pos++; l.pos < len(l.src) && l.src[l.pos] != c; l.pos++ {
				}
				l.pos++
			case '{':
				l.pos++
				t.parts = append(t.parts, l.inner())
			case '/':
				selfClosing = l.peek(1) == '>'
				l.pos++
			case '>':
				l.pos++
				break tag
			default:
				l.pos++
			}
		}
		switch {
		case closing:
			open--
		case !selfClosing:
			open++
		}
		if open <= 0 {
			break
		}
		for l.pos < len(l.src) && l.src[l.pos] != '<' {
			if l.src[l.pos] == '{' {
				l.pos++
				t.parts = append(t.parts, l.inner())
				continue
			}
			l.pos++
		}
	}
	l.pos = min(l.pos, len(l.src))
	t.end = int32(l.pos)
	l.toks = append(l.toks, t)
}

// lexPython makes tokens of Python (the language reference, 3.14, section 2),
// with tNewline, tIndent and tDedent for its layout.
func lexPython(src []byte) []tok {
	l := newLexer(src, Python)
	if strings.HasPrefix(string(src[:min(3, len(src))]), "\xef\xbb\xbf") {
		l.pos = 3
	}
	l.python(false)
	l.emit(tEOF, l.pos, "")
	return l.toks
}

func (l *lexer) python(inner bool) {
	indents := []int{0}
	depth := 0
	l.depth++
	defer func() { l.depth-- }()
	lineStart := !inner
	for l.pos < len(l.src) {
		if lineStart && depth == 0 {
			lineStart = false
			width := 0
		measure:
			for l.pos < len(l.src) {
				switch l.src[l.pos] {
				case ' ':
					width++
				case '\t':
					width += 8 - width%8
				case '\f':
				default:
					break measure
				}
				l.pos++
			}
			if c := l.peek(0); c == '#' || c == '\n' || c == '\r' || l.pos >= len(l.src) {
				// Blank and comment lines say nothing about layout.
			} else if width > indents[len(indents)-1] {
				indents = append(indents, width)
				l.emit(tIndent, l.pos, "")
			} else {
				for len(indents) > 1 && width < indents[len(indents)-1] {
					indents = indents[:len(indents)-1]
					l.emit(tDedent, l.pos, "")
				}
			}
			continue
		}
		c := l.src[l.pos]
		switch {
		case c == '\n':
			l.pos++
			if depth == 0 && !inner {
				if n := len(l.toks); n > 0 && l.toks[n-1].kind != tNewline && l.toks[n-1].kind != tIndent && l.toks[n-1].kind != tDedent {
					l.emit(tNewline, l.pos-1, "")
				}
				lineStart = true
			}
			l.nl = true
		case c == '\\' && (l.peek(1) == '\n' || l.peek(1) == '\r'):
			for l.pos++; l.pos < len(l.src) && l.src[l.pos] != '\n'; l.pos++ {
			}
			l.pos++
		case c <= ' ':
			l.pos++
		case c == '#':
			for l.pos < len(l.src) && l.src[l.pos] != '\n' {
				l.pos++
			}
		case c >= '0' && c <= '9' || c == '.' && l.peek(1) >= '0' && l.peek(1) <= '9':
			start := l.pos
			l.emit(tNumber, start, l.number())
		case c == '"' || c == '\'':
			l.pyString("")
		case isIdentStart(c) && c != '$':
			start := l.pos
			name := l.ident()
			if q := l.peek(0); (q == '"' || q == '\'') && len(name) <= 2 && strings.Trim(strings.ToLower(name), "rbuft") == "" {
				l.pos = start
				l.pyString(strings.ToLower(name))
				continue
			}
			if name != "" {
				l.emit(tName, start, name)
			} else if l.pos == start {
				l.pos++
			}
		default:
			switch c {
			case '(', '[', '{':
				depth++
			case ')', ']', '}':
				if depth == 0 && inner && c == '}' {
					return
				}
				depth = max(0, depth-1)
			case ':', '!', '=':
				if inner && depth == 0 && l.peek(1) != '=' && (c != '=' || l.pos == 0 || !strings.ContainsRune("=!<>", rune(l.src[l.pos-1]))) {
					return // a format specification or a conversion
				}
			}
			l.punct(&pyOps)
		}
	}
	if !inner {
		l.emit(tNewline, l.pos, "")
		for range indents[1:] {
			l.emit(tDedent, l.pos, "")
		}
	}
}

func (l *lexer) pyString(prefix string) {
	start := l.pos
	l.pos += len(prefix)
	q := l.src[l.pos]
	triple := l.peek(1) == q && l.peek(2) == q
	raw := strings.Contains(prefix, "r")
	format := strings.ContainsAny(prefix, "ft")
	if triple {
		l.pos += 3
	} else {
		l.pos++
	}
	if !triple && !format {
		if i := plainEnd(l.text[l.pos:], q); i >= 0 {
			text := l.text[l.pos : l.pos+i]
			l.pos += i + 1
			l.emit(tString, start, text)
			return
		}
	}
	t := tok{kind: tString, nl: l.nl, off: int32(start)}
	l.nl = false
	var b strings.Builder
	from := l.pos
	flush := func() {
		t.parts = append(t.parts, part{text: b.String(), off: int32(from), end: int32(l.pos)})
		b.Reset()
	}
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		if c == q && (!triple || l.peek(1) == q && l.peek(2) == q) {
			break
		}
		if c == '\n' && !triple {
			break
		}
		switch {
		case c == '\\' && raw:
			b.WriteByte(c)
			l.pos++
			if l.pos < len(l.src) {
				b.WriteByte(l.src[l.pos])
				l.pos++
			}
		case c == '\\':
			l.escape(&b)
		case format && c == '{' && l.peek(1) == '{', format && c == '}' && l.peek(1) == '}':
			b.WriteByte(c)
			l.pos += 2
		case format && c == '{' && l.depth < maxNesting:
			flush()
			l.pos++
			saved := l.toks
			l.toks = nil
			p := part{off: int32(l.pos)}
			l.python(true)
			p.end = int32(l.pos)
			l.emit(tEOF, l.pos, "")
			p.toks = l.toks
			l.toks = saved
			t.parts = append(t.parts, p)
			for depth := 0; l.pos < len(l.src) && l.src[l.pos] != '\n'; l.pos++ {
				if l.src[l.pos] == '{' {
					depth++
				} else if l.src[l.pos] == '}' {
					if depth--; depth < 0 {
						l.pos++
						break
					}
				} else if l.src[l.pos] == q && !triple {
					break
				}
			}
			from = l.pos
		default:
			b.WriteByte(c)
			l.pos++
		}
	}
	flush()
	if l.peek(0) == q {
		l.pos++
		if triple {
			l.pos = min(l.pos+2, len(l.src))
		}
	}
	l.pos = min(l.pos, len(l.src))
	if len(t.parts) == 1 {
		t.text = t.parts[0].text
		t.parts = nil
	} else {
		t.kind = tTemplate
	}
	t.end = int32(l.pos)
	l.toks = append(l.toks, t)
}
