package code

import (
	"strings"
)

// lexers of the languages whose shape is told by braces or by the word end.
// Sources: Ruby 3.4 "Syntax", Java SE 25 language specification chapter 3,
// Kotlin specification "Lexical grammar", Groovy "Syntax", PHP manual "Basic
// syntax" and "Strings", C# specification chapter 6, The Rust Reference
// "Lexical structure", Elixir "Syntax reference".

var moreOps = byFirst([]string{"<<<=", ">>>=", "<=>", "===", "!==", "**=", "&&=", "||=", "??=", "<<=", ">>=", "==~", "...", "..=", "..<", "?->", "!!.", "//=",
	"->", "=>", "::", "?.", "&.", "?:", "??", "|>", "<>", "++", "--", "==", "!=", "<=", ">=", "&&", "||", "+=", "-=", "*=", "/=", "%=", ".=", "&=", "|=", "^=", "**", "<<", "..", "=~", "!~", "<-", "!!"})

// sameAs are operators that mean what another language writes with another
// sign.
var sameAs = map[Language]map[string]string{
	PHP:    {"->": ".", "?->": ".", "::": ".", "?:": "||", ".": ".+", ".=": "+=", "<>": "!="},
	Ruby:   {"&.": ".", "::": "."},
	Rust:   {"::": "."},
	Kotlin: {"?.": ".", "!!.": ".", "?:": "??", "::": "."},
	CSharp: {"?.": ".", "::": "."},
	Java:   {"::": "."},
	Groovy: {"?.": ".", "?:": "||", "::": "."},
	Elixir: {"<>": "+", "++": "+"},
}

// lexMore makes tokens of one of these languages.
func lexMore(src []byte, lang Language) []tok {
	l := newLexer(src, lang)
	if strings.HasPrefix(l.text, "#!") {
		l.line()
	}
	if lang == PHP {
		l.outside()
	}
	l.more(false)
	l.emit(tEOF, l.pos, "")
	return l.toks
}

// line steps to the end of the line.
func (l *lexer) line() {
	if i := strings.IndexByte(l.text[l.pos:], '\n'); i >= 0 {
		l.pos += i
	} else {
		l.pos = len(l.text)
	}
}

// outside steps over the text between pieces of PHP.
func (l *lexer) outside() {
	i := strings.Index(l.text[l.pos:], "<?")
	if i < 0 {
		l.pos = len(l.text)
		return
	}
	l.pos += i + 2
	if strings.HasPrefix(l.text[l.pos:], "php") {
		l.pos += 3
	} else if l.peek(0) == '=' {
		l.pos++
	}
	l.nl = true
}

func (l *lexer) hashComments() bool { return l.lang == Ruby || l.lang == Elixir || l.lang == PHP }

// more lexes up to an unmatched closing brace, where inner is set, or the end.
func (l *lexer) more(inner bool) {
	braces := 0
	l.depth++
	defer func() { l.depth-- }()
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		start := l.pos
		switch {
		case c == '\n':
			l.nl = true
			l.pos++
			if l.lang == Ruby && strings.HasPrefix(l.text[l.pos:], "=begin") {
				if i := strings.Index(l.text[l.pos:], "\n=end"); i >= 0 {
					l.pos += i + 5
				} else {
					l.pos = len(l.text)
				}
			}
			if l.lang == Ruby && strings.HasPrefix(l.text[l.pos:], "__END__") {
				l.pos = len(l.text)
			}
		case c <= ' ':
			l.pos++
		case c == '\\' && (l.peek(1) == '\n' || l.peek(1) == '\r'):
			l.pos += 2
			if l.src[l.pos-1] == '\r' && l.peek(0) == '\n' {
				l.pos++
			}
		case c == '#' && l.hashComments() && !(l.lang == PHP && l.peek(1) == '['):
			l.line()
		case c == '/' && l.peek(1) == '/' && l.lang != Ruby && l.lang != Elixir:
			l.line()
		case c == '/' && l.peek(1) == '*' && l.lang != Ruby && l.lang != Elixir:
			l.blockComment()
		case c == '?' && l.peek(1) == '>' && l.lang == PHP:
			l.pos += 2
			l.outside()
		case l.quoted():
		case c >= '0' && c <= '9':
			l.digits()
			l.emit(tNumber, start, l.text[start:l.pos])
		case isIdentStart(c) || c == '@' && l.lang == Ruby && (isIdentStart(l.peek(1)) || l.peek(1) == '@' && isIdentStart(l.peek(2))):
			if c == '@' {
				l.pos++
			}
			if c == '@' && l.peek(0) == '@' {
				l.pos++
			}
			if l.ident() == "" && l.pos == start {
				l.pos++
				continue
			}
			if (l.lang == Ruby || l.lang == Elixir) && (l.peek(0) == '?' || l.peek(0) == '!') && l.peek(1) != '=' && l.pos > start {
				l.pos++
			}
			if l.lang == PHP && l.peek(0) == '\\' || l.lang == PHP && c == '\\' {
				l.backslashed()
			}
			l.emit(tName, start, strings.Replace(l.text[start:l.pos], "@@", "@", 1))
		case c == '\\' && l.lang == PHP && isIdentStart(l.peek(1)):
			l.backslashed()
			l.emit(tName, start, l.text[start+1:l.pos])
		default:
			if c == '{' {
				braces++
			}
			if c == '}' {
				if braces--; braces < 0 && inner {
					return
				}
			}
			if c == '>' && l.peek(1) == '>' && (l.lang == Ruby || l.lang == PHP) && l.peek(2) != '=' { // no types stand in brackets here
				l.pos += 2
				l.emit(tPunct, start, ">>")
				continue
			}
			l.punct(&moreOps)
			t := &l.toks[len(l.toks)-1]
			if as := sameAs[l.lang][t.text]; as != "" {
				t.text = as
			}
		}
	}
}

// backslashed goes on through a name with namespaces.
func (l *lexer) backslashed() {
	for l.peek(0) == '\\' && isIdentStart(l.peek(1)) {
		l.pos++
		l.ident()
	}
}

func (l *lexer) blockComment() {
	depth := 0
	for l.pos < len(l.src) {
		switch {
		case strings.HasPrefix(l.text[l.pos:], "/*") && (depth == 0 || l.lang == Rust || l.lang == Kotlin):
			depth++
			l.pos += 2
			continue
		case strings.HasPrefix(l.text[l.pos:], "*/"):
			l.pos += 2
			if depth--; depth == 0 {
				return
			}
			continue
		case l.src[l.pos] == '\n':
			l.nl = true
		}
		l.pos++
	}
}

// digits reads a number; a dot belongs to it only before another digit.
func (l *lexer) digits() {
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		if isIdent(c) && c < 0x80 || c == '.' && l.peek(1) >= '0' && l.peek(1) <= '9' {
			l.pos++
			continue
		}
		return
	}
}

// quoted reads a text in any of the forms of the language; it reports whether
// one stands here.
func (l *lexer) quoted() bool {
	c := l.src[l.pos]
	rest := l.text[l.pos:]
	switch l.lang {
	case Ruby:
		switch {
		case c == '"' || c == '`':
			l.text1(1, string(c), true, "#{")
		case c == '\'':
			l.text1(1, "'", true, "")
		case c == ':' && l.peek(1) == '"':
			l.pos++
			l.text1(1, `"`, true, "#{")
		case c == ':' && isIdentStart(l.peek(1)) && (l.pos == 0 || l.src[l.pos-1] != ':'):
			l.symbol()
		case c == ':' && l.peek(1) == '@' && (isIdentStart(l.peek(2)) || l.peek(2) == '@') && l.pos > 0 && strings.IndexByte("(, [", l.src[l.pos-1]) >= 0: // :@name
			start := l.pos
			for l.pos++; l.peek(0) == '@'; l.pos++ {
			}
			l.ident()
			l.emit(tString, start, l.text[start+1:l.pos])
		case c == ':' && l.pos > 0 && strings.IndexByte("(, &", l.src[l.pos-1]) >= 0 && l.signSymbol():
		case c == '$' && strings.IndexByte("~!?&", l.peek(1)) >= 0 && l.peek(1) != 0:
			l.pos += 2
			l.emit(tName, l.pos-2, l.text[l.pos-2:l.pos])
		case c == '%' && l.before() && strings.ContainsRune("wWiIqQ([{<|!/", rune(l.peek(1))):
			return l.percent()
		case c == '<' && l.peek(1) == '<' && (l.peek(2) == '~' || l.peek(2) == '-' || l.peek(2) >= 'A' && l.peek(2) <= 'Z') && l.before():
			return l.hereDocument(2)
		case c == '/' && l.before():
			l.jsRegex()
		case c == '?' && isIdentStart(l.peek(1)) && !isIdent(l.peek(2)) && l.before():
			l.pos += 2
			l.emit(tString, l.pos-2, l.text[l.pos-1:l.pos])
		default:
			return false
		}
	case Elixir:
		switch {
		case strings.HasPrefix(rest, `"""`):
			l.text1(3, `"""`, true, "#{")
		case strings.HasPrefix(rest, `'''`):
			l.text1(3, `'''`, true, "#{")
		case c == '"' || c == '\'':
			l.text1(1, string(c), true, "#{")
		case c == ':' && l.peek(1) == '"':
			l.pos++
			l.text1(1, `"`, true, "#{")
		case c == ':' && isIdentStart(l.peek(1)) && (l.pos == 0 || l.src[l.pos-1] != ':'):
			l.symbol()
		case c == '~' && isIdentStart(l.peek(1)):
			return l.sigil()
		case c == '?' && l.before() && l.peek(1) > ' ':
			l.pos += 2
			l.emit(tString, l.pos-2, l.text[l.pos-1:l.pos])
		default:
			return false
		}
	case Java:
		switch {
		case strings.HasPrefix(rest, `"""`):
			l.text1(3, `"""`, true, "")
			t := &l.toks[len(l.toks)-1]
			t.text = textBlock(t.text)
		case c == '"' || c == '\'':
			l.text1(1, string(c), true, "")
		default:
			return false
		}
	case Kotlin, Groovy:
		switch {
		case strings.HasPrefix(rest, `"""`):
			l.text1(3, `"""`, l.lang == Groovy, "$")
		case strings.HasPrefix(rest, `'''`) && l.lang == Groovy:
			l.text1(3, `'''`, true, "")
		case c == '"':
			l.text1(1, `"`, true, "$")
		case c == '\'':
			l.text1(1, `'`, true, "")
		case c == '/' && l.lang == Groovy && l.before() && l.peek(1) != '/' && l.peek(1) != '*':
			l.jsRegex()
		case c == '`':
			if i := strings.IndexByte(rest[1:], '`'); i >= 0 {
				l.pos += i + 2
				l.emit(tName, l.pos-i-2, rest[1:i+1])
				return true
			}
			return false
		default:
			return false
		}
	case CSharp:
		n := 0
		for n < len(rest) && (rest[n] == '$' || rest[n] == '@') {
			n++
		}
		switch {
		case n < len(rest) && strings.HasPrefix(rest[n:], `"""`):
			l.text1(n+3, `"""`, false, map[bool]string{true: "{"}[n > 0])
		case n < len(rest) && rest[n] == '"':
			l.text1(n+1, `"`, !strings.Contains(rest[:n], "@"), map[bool]string{true: "{"}[strings.Contains(rest[:n], "$")])
		case c == '\'':
			l.text1(1, `'`, true, "")
		default:
			return false
		}
	case PHP:
		switch {
		case strings.HasPrefix(rest, "<<<"):
			return l.hereDocument(3)
		case c == '"' || c == '`':
			l.text1(1, string(c), true, "$")
		case c == '\'':
			l.text1(1, `'`, true, "")
		default:
			return false
		}
	case Rust:
		i := 0
		for i < len(rest) && i < 2 && (rest[i] == 'b' || rest[i] == 'r' || rest[i] == 'c') {
			i++
		}
		h := i
		for h < len(rest) && rest[h] == '#' {
			h++
		}
		switch {
		case h < len(rest) && rest[h] == '"' && (h == i || i > 0) && strings.Contains(rest[:i], "r"):
			l.text1(h+1, `"`+strings.Repeat("#", h-i), false, "")
		case h == i && i < len(rest) && rest[i] == '"':
			l.text1(i+1, `"`, true, "")
		case c == '\'':
			// 'x' is a character, 'x alone the name of a lifetime.
			if end := strings.IndexByte(rest[1:min(len(rest), 14)], '\''); end > 0 && (rest[1] == '\\' || end <= 4 && !isIdent(rest[1]) || end == 1) {
				l.text1(1, `'`, true, "")
				return true
			}
			l.pos++
			l.ident()
		default:
			return false
		}
	default:
		return false
	}
	return true
}

// before reports whether a value may begin here: after an operator, an open
// bracket, a comma, or a name with a space between.
func (l *lexer) before() bool {
	if len(l.toks) == 0 || l.nl {
		return true
	}
	t := l.toks[len(l.toks)-1]
	switch t.kind {
	case tPunct:
		return t.text != ")" && t.text != "]" && t.text != "}"
	case tName:
		return int(t.end) < l.pos && l.peek(1) > ' ' && l.peek(1) != '='
	}
	return false
}

// text1 reads a text after skip bytes up to its closing sign. sign begins an
// expression in it: "#{", "$" (also ${ }), "{".
func (l *lexer) text1(skip int, closing string, escapes bool, sign string) {
	start := l.pos
	t := tok{kind: tTemplate, nl: l.nl, off: int32(start)}
	var b strings.Builder
	l.pos = min(l.pos+skip, len(l.src))
	from := l.pos
	flush := func() {
		t.parts = append(t.parts, part{text: b.String(), off: int32(from), end: int32(l.pos)})
		b.Reset()
	}
	for l.pos < len(l.src) {
		rest := l.text[l.pos:]
		c := rest[0]
		switch {
		case strings.HasPrefix(rest, closing):
			if l.lang == CSharp && !escapes && closing == `"` && strings.HasPrefix(rest, `""`) {
				b.WriteByte('"')
				l.pos += 2
				continue
			}
			flush()
			l.pos += len(closing)
			l.endText(t)
			return
		case c == '\\' && closing == "'" && (l.lang == PHP || l.lang == Ruby): // only the sign itself and \' are written so
			if n := l.peek(1); n == '\'' || n == '\\' {
				l.pos++
			}
			b.WriteByte(l.src[l.pos])
			l.pos++
		case c == '\\' && escapes:
			l.escape(&b)
		case sign == "{" && c == '{' && l.peek(1) == '{':
			b.WriteByte('{')
			l.pos += 2
		case (sign == "#{" && strings.HasPrefix(rest, "#{") || sign == "$" && (strings.HasPrefix(rest, "${") || l.lang == PHP && strings.HasPrefix(rest, "{$"))) && l.depth < maxNesting:
			flush()
			l.pos += 2
			if l.lang == PHP && rest[0] == '{' {
				l.pos--
			}
			t.parts = append(t.parts, l.innerMore())
			from = l.pos
		case sign == "{" && c == '{' && l.depth < maxNesting:
			flush()
			l.pos++
			t.parts = append(t.parts, l.innerMore())
			from = l.pos
		case sign == "$" && c == '$' && isIdentStart(l.peek(1)) && l.peek(1) != '$':
			flush()
			at := l.pos
			l.pos++
			name := l.ident()
			if i := strings.IndexByte(name, '$'); i > 0 { // "$a$b" are two
				l.pos -= len(name) - i
				name = name[:i]
			}
			if l.lang == PHP {
				name = "$" + name
			}
			toks := []tok{{kind: tName, text: name, off: int32(at), end: int32(l.pos)}}
			if l.lang == PHP {
				toks = append(toks, l.simple()...)
			}
			toks = append(toks, tok{kind: tEOF, off: int32(l.pos), end: int32(l.pos)})
			t.parts = append(t.parts, part{toks: toks, off: int32(at), end: int32(l.pos)})
			from = l.pos
		case c == '\n' && len(closing) == 1 && (l.lang == Java || l.lang == Kotlin || l.lang == CSharp && escapes):
			flush() // not closed on its line
			l.endText(t)
			return
		default:
			b.WriteByte(c)
			l.pos++
		}
	}
	flush()
	l.endText(t)
}

// textBlock takes off the first line end of a text block of Java and the spaces
// that all of its lines begin with (Java SE 25 language specification, 3.10.6).
func textBlock(s string) string {
	_, body, ok := strings.Cut(s, "\n")
	if !ok {
		return s
	}
	lines := strings.Split(body, "\n")
	least := -1
	for i, row := range lines {
		if n := len(row) - len(strings.TrimLeft(row, " \t")); (strings.TrimSpace(row) != "" || i == len(lines)-1) && (least < 0 || n < least) {
			least = n
		}
	}
	for i, row := range lines {
		lines[i] = strings.TrimRight(row[min(len(row), max(0, least)):], " \t\r")
	}
	return strings.Join(lines, "\n")
}

// simple reads what may follow a variable in a text of PHP: one property, or
// one index whose key has no quotes (PHP manual, "Variable parsing").
func (l *lexer) simple() []tok {
	mark := func(kind tokKind, text string, n int) tok {
		l.pos += n
		return tok{kind: kind, text: text, off: int32(l.pos - n), end: int32(l.pos)}
	}
	switch {
	case l.peek(0) == '-' && l.peek(1) == '>' && isIdentStart(l.peek(2)):
		dot := mark(tPunct, ".", 2)
		at := l.pos
		name := l.ident()
		return []tok{dot, {kind: tName, text: name, off: int32(at), end: int32(l.pos)}}
	case l.peek(0) == '[':
		rest := l.src[l.pos+1:]
		end := strings.IndexByte(string(rest[:min(len(rest), 200)]), ']')
		if end <= 0 {
			return nil
		}
		key, kind := string(rest[:end]), tString
		if key[0] == '$' {
			kind = tName
		} else if strings.Trim(key, "0123456789") == "" {
			kind = tNumber
		}
		return []tok{mark(tPunct, "[", 1), mark(kind, key, end), mark(tPunct, "]", 1)}
	}
	return nil
}

// endText adds a text token: one without expressions is a plain string.
func (l *lexer) endText(t tok) {
	t.end = int32(min(l.pos, len(l.src)))
	if len(t.parts) == 1 && t.parts[0].toks == nil {
		t.kind, t.text, t.parts = tString, t.parts[0].text, nil
	}
	l.toks = append(l.toks, t)
	l.nl = false
}

// innerMore lexes an expression in a text up to its closing brace.
func (l *lexer) innerMore() part {
	saved, nl := l.toks, l.nl
	start := l.pos
	l.toks, l.nl = nil, false
	l.more(true)
	l.emit(tEOF, l.pos, "")
	p := part{toks: l.toks, off: int32(start), end: int32(l.pos)}
	l.toks, l.nl = saved, nl
	if l.pos < len(l.src) {
		l.pos++ // the brace
	}
	return p
}

func (l *lexer) symbol() {
	start := l.pos
	l.pos++
	name := l.ident()
	if c := l.peek(0); (c == '?' || c == '!') && l.peek(1) != '=' {
		l.pos++
		name += string(c)
	}
	l.emit(tString, start, name)
}

// signSymbol reads the symbol of an operator of Ruby: inject(:+).
func (l *lexer) signSymbol() bool {
	end := l.pos + 1
	for end < len(l.src) && strings.IndexByte("+-*/%<>=!&|^~[]", l.src[end]) >= 0 {
		end++
	}
	if n := end - l.pos - 1; n < 1 || n > 3 || end < len(l.src) && strings.IndexByte("), \n.", l.src[end]) < 0 {
		return false
	}
	start := l.pos
	l.pos = end
	l.emit(tString, start, l.text[start+1:end])
	return true
}

var closers = map[byte]byte{'(': ')', '[': ']', '{': '}', '<': '>'}

// delimited reads up to the closing sign, with pairs inside.
func (l *lexer) delimited(open byte) string {
	end := open
	if c, ok := closers[open]; ok {
		end = c
	}
	start, depth := l.pos, 1
	for l.pos < len(l.src) {
		c := l.src[l.pos]
		switch {
		case c == '\\':
			l.pos++
		case c == end:
			if depth--; depth == 0 {
				s := l.text[start:l.pos]
				l.pos++
				return s
			}
		case c == open:
			depth++
		}
		l.pos++
	}
	l.pos = len(l.src)
	return l.text[min(start, len(l.text)):]
}

// percent reads %w[a b], %(text) and their like of Ruby.
func (l *lexer) percent() bool {
	start := l.pos
	kind := l.peek(1)
	n := 2
	if strings.IndexByte("wWiIqQ", kind) >= 0 {
		n = 3
	} else {
		kind = 'Q'
	}
	open := l.peek(n - 1)
	if open == 0 || isIdent(open) || open <= ' ' {
		return false
	}
	l.pos += n
	body := l.delimited(open)
	if kind == 'q' || kind == 'Q' {
		l.emit(tString, start, body)
		return true
	}
	// A list of words: the tokens of [ "a", "b" ].
	l.emit(tPunct, start, "[")
	for i, w := range strings.Fields(body) {
		if i > 0 {
			l.emit(tPunct, start, ",")
		}
		l.emit(tString, start, w)
	}
	l.emit(tPunct, start, "]")
	return true
}

// sigil reads ~s(text), ~w[a b] and their like of Elixir.
func (l *lexer) sigil() bool {
	start := l.pos
	l.pos++
	name := l.ident()
	rest := l.text[l.pos:]
	if rest == "" {
		return true
	}
	for _, triple := range []string{`"""`, `'''`} {
		if strings.HasPrefix(rest, triple) {
			l.pos += 3
			body := l.text[l.pos:]
			if i := strings.Index(body, triple); i >= 0 {
				body = body[:i]
				l.pos += i + 3
			} else {
				l.pos = len(l.text)
			}
			l.emit(tString, start, body)
			return true
		}
	}
	open := rest[0]
	if isIdent(open) || open <= ' ' {
		return true
	}
	l.pos++
	body := l.delimited(open)
	l.ident()
	if name == "r" || name == "R" {
		l.emit(tRegex, start, "")
		return true
	}
	if name != "w" && name != "W" {
		l.emit(tString, start, body)
		return true
	}
	l.emit(tPunct, start, "[")
	for i, w := range strings.Fields(body) {
		if i > 0 {
			l.emit(tPunct, start, ",")
		}
		l.emit(tString, start, w)
	}
	l.emit(tPunct, start, "]")
	return true
}

// hereDocument reads <<~X … X of Ruby and <<<X … X of PHP; what follows on the
// first line is read after it.
func (l *lexer) hereDocument(skip int) bool {
	start := l.pos
	at := l.pos + skip
	for at < len(l.src) && (l.src[at] == '~' || l.src[at] == '-' || l.src[at] == ' ') {
		at++
	}
	quote := byte(0)
	if at < len(l.src) && (l.src[at] == '\'' || l.src[at] == '"') {
		quote = l.src[at]
		at++
	}
	end := at
	for end < len(l.src) && isIdent(l.src[end]) {
		end++
	}
	if end == at {
		return false
	}
	word, level := l.text[at:end], l.lang == PHP || strings.Contains(l.text[start:at], "~")
	if quote != 0 {
		end++
	}
	eol := strings.IndexByte(l.text[min(end, len(l.text)):], '\n')
	if eol < 0 {
		return false
	}
	body := end + eol + 1
	stop := body
	for stop < len(l.text) {
		next := strings.IndexByte(l.text[stop:], '\n')
		row := l.text[stop:]
		if next >= 0 {
			row = l.text[stop : stop+next]
		}
		if trimmed := strings.TrimSpace(row); trimmed == word || l.lang == PHP && strings.HasPrefix(trimmed, word) && (len(trimmed) == len(word) || !isIdent(trimmed[len(word)])) {
			break
		}
		if next < 0 {
			stop = len(l.text)
			break
		}
		stop += next + 1
	}
	shut := min(stop, len(l.text))
	after := l.text[end : end+eol]
	l.pos = end
	if quote == '\'' {
		l.emit(tString, start, l.text[body:shut])
	} else {
		sign := "#{"
		if l.lang == PHP {
			sign = "$"
		}
		in := &lexer{src: l.src[:shut], text: l.text[:shut], pos: body, lang: l.lang, depth: l.depth}
		in.text1(0, "\x00", true, sign) // to its end: no such sign closes it
		t := in.toks[0]
		t.off, t.end, t.nl = int32(start), int32(end), l.nl
		l.toks, l.nl = append(l.toks, t), false
	}
	last := ""
	if l.lang == PHP { // the line end before the word is none of its own
		last = "\n"
	}
	lead := 0
	if l.lang == PHP {
		lead = len(l.text[stop:]) - len(strings.TrimLeft(l.text[stop:], " \t"))
	}
	l.toks[len(l.toks)-1].dedent(level, lead, last)
	if l.lang == Ruby {
		// The rest of the line comes before the text.
		tail := &lexer{src: l.src[:end+eol], text: l.text[:end+eol], pos: end, lang: l.lang, toks: l.toks, depth: l.depth}
		if strings.TrimSpace(after) != "" && !strings.Contains(after, "<<") {
			tail.more(false)
			l.toks = tail.toks
		}
		l.pos = stop
		if i := strings.IndexByte(l.text[l.pos:], '\n'); i >= 0 {
			l.pos += i
		} else {
			l.pos = len(l.text)
		}
		l.nl = true
		return true
	}
	l.pos = min(stop+lead+len(word), len(l.text))
	return true
}

// dedent takes from the lines of a text what they all begin with (Ruby), or as much
// as its closing word is put in (PHP), and last from its end.
func (t *tok) dedent(level bool, lead int, last string) {
	pieces := []*string{&t.text}
	if t.kind == tTemplate {
		pieces = nil
		for i := range t.parts {
			if t.parts[i].toks == nil {
				pieces = append(pieces, &t.parts[i].text)
			}
		}
	}
	if len(pieces) == 0 {
		return
	}
	*pieces[len(pieces)-1] = strings.TrimSuffix(*pieces[len(pieces)-1], last)
	if !level {
		return
	}
	if last == "" { // what all lines begin with
		lead = -1
		for i, p := range pieces {
			for j, row := range strings.Split(*p, "\n") {
				if i > 0 && j == 0 {
					continue
				}
				rest := strings.TrimLeft(row, " \t")
				inside := j == strings.Count(*p, "\n") && i < len(pieces)-1
				if n := len(row) - len(rest); (rest != "" || inside) && (lead < 0 || n < lead) {
					lead = n
				}
			}
		}
	}
	for i, p := range pieces {
		rows := strings.Split(*p, "\n")
		for j, row := range rows {
			if i == 0 || j > 0 {
				n := len(row) - len(strings.TrimLeft(row, " \t"))
				rows[j] = row[max(0, min(lead, n)):]
			}
		}
		*p = strings.Join(rows, "\n")
	}
}
