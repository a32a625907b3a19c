// Package rust reads source of Rust whole: items, statements, expressions, patterns
// and types, as a program that goes through it needs them. Package code reads the same
// files loosely, as it reads every language, for the rules that look at one call.
//
// Source: The Rust Reference, 1.91 ("Lexical structure", "Items", "Statements and
// expressions", "Patterns", "Types"; read 2026-11).
package rust

import (
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

type tokenKind uint8

const (
	tEnd tokenKind = iota
	tWord
	tLifetime
	tNumber
	tText  // a text, or one of bytes
	tChar  // a character, or a byte
	tPunct // one sign, or several that belong together
)

type token struct {
	kind     tokenKind
	text     string // of texts and characters: what they stand for
	off, end int32
}

// signs are those of more than one character, the longest first.
var signs = []string{"<<=", ">>=", "...", "..=", "::", "->", "=>", "==", "!=", "<=", ">=", "&&", "||", "+=", "-=", "*=", "/=", "%=", "^=", "&=", "|=", "<<", ">>", ".."}

func wordStart(c byte) bool {
	return c == '_' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= utf8.RuneSelf
}

func wordPart(c byte) bool { return wordStart(c) || c >= '0' && c <= '9' }

// lex makes tokens of a source; what cannot be one is left out.
func lex(src string) []token {
	toks := make([]token, 0, len(src)/4+8)
	add := func(k tokenKind, text string, off, end int) {
		toks = append(toks, token{k, text, int32(off), int32(end)})
	}
	i := 0
	if strings.HasPrefix(src, "#!") && !strings.HasPrefix(src, "#![") {
		i = lineEnd(src, 0)
	}
	for i < len(src) {
		c, at := src[i], i
		switch {
		case c <= ' ':
			i++
		case strings.HasPrefix(src[i:], "//"):
			i = lineEnd(src, i)
		case strings.HasPrefix(src[i:], "/*"):
			i = commentEnd(src, i)
		case c == '\'':
			i = quoteMark(src, i, add)
		case c >= '0' && c <= '9':
			i = numberEnd(src, i)
			add(tNumber, src[at:i], at, i)
		case c == '"':
			var text string
			if text, i = quoted(src, i+1); i < 0 {
				return append(toks, token{off: int32(at), end: int32(len(src))})
			}
			add(tText, text, at, i)
		case c == 'r' || c == 'b' || c == 'c':
			k, text, end := marked(src, i)
			if end < 0 {
				return append(toks, token{off: int32(at), end: int32(len(src))})
			}
			if end > 0 {
				i = end
				add(k, text, at, i)
				continue
			}
			fallthrough
		case wordStart(c):
			for i < len(src) && wordPart(src[i]) {
				if src[i] < utf8.RuneSelf {
					i++
					continue
				}
				r, n := utf8.DecodeRuneInString(src[i:])
				i += n
				if unicode.IsSpace(r) || r == 0xfeff {
					break
				}
			}
			if word := strings.Trim(src[at:i], "\ufeff\u00a0\u2028\u2029\u0085"); word != "" {
				add(tWord, strings.TrimPrefix(word, "r#"), at, i)
			}
		default:
			n := 1
			for _, s := range signs {
				if strings.HasPrefix(src[i:], s) {
					n = len(s)
					break
				}
			}
			i += n
			add(tPunct, src[at:i], at, i)
		}
	}
	return append(toks, token{off: int32(len(src)), end: int32(len(src))})
}

func lineEnd(src string, i int) int {
	if n := strings.IndexByte(src[i:], '\n'); n >= 0 {
		return i + n
	}
	return len(src)
}

// commentEnd is behind a comment, which may hold others.
func commentEnd(src string, i int) int {
	depth := 0
	for i < len(src) {
		switch {
		case strings.HasPrefix(src[i:], "/*"):
			depth++
			i += 2
		case strings.HasPrefix(src[i:], "*/"):
			i += 2
			if depth--; depth == 0 {
				return i
			}
		default:
			i++
		}
	}
	return i
}

// quoteMark reads what begins with one: a character, or a lifetime.
func quoteMark(src string, i int, add func(tokenKind, string, int, int)) int {
	at := i
	if i+1 < len(src) && src[i+1] == '\\' {
		if text, end := escaped(src, i+1); end > 0 && end < len(src) && src[end] == '\'' {
			add(tChar, text, at, end+1)
			return end + 1
		}
	}
	if i+1 < len(src) {
		if _, n := utf8.DecodeRuneInString(src[i+1:]); i+1+n < len(src) && src[i+1+n] == '\'' && src[i+1] != '\'' {
			add(tChar, src[i+1:i+1+n], at, i+2+n)
			return i + 2 + n
		}
	}
	for i++; i < len(src) && wordPart(src[i]); i++ {
	}
	add(tLifetime, src[at+1:i], at, i)
	return i
}

// numberEnd is behind a number: a dot belongs to it where a digit or nothing that is
// called or counted follows.
func numberEnd(src string, i int) int {
	at := i
	for i < len(src) {
		switch c := src[i]; {
		case wordPart(c) && c < utf8.RuneSelf:
			i++
		case c == '.' && i+1 < len(src) && src[i+1] >= '0' && src[i+1] <= '9' && !strings.ContainsAny(src[at:i], "."):
			i++
		case c == '.' && !strings.ContainsAny(src[at:i], ".") && (i+1 == len(src) || src[i+1] != '.' && !wordStart(src[i+1])):
			i++
		case (c == '+' || c == '-') && (src[i-1] == 'e' || src[i-1] == 'E') && !strings.HasPrefix(src[at:], "0x"):
			i++
		default:
			return i
		}
	}
	return i
}

// marked reads texts with letters before their quotes; the end is 0 where it is none.
func marked(src string, i int) (k tokenKind, text string, end int) {
	at := i
	for i < len(src) && i < at+2 && strings.IndexByte("brc", src[i]) >= 0 {
		i++
	}
	raw := strings.Contains(src[at:i], "r")
	hashes := 0
	for raw && i < len(src) && src[i] == '#' {
		hashes++
		i++
	}
	switch {
	case i >= len(src):
	case src[i] == '"' && raw:
		close := `"` + strings.Repeat("#", hashes)
		n := strings.Index(src[i+1:], close)
		if n < 0 {
			return tText, "", -1
		}
		return tText, src[i+1 : i+1+n], i + 1 + n + len(close)
	case src[i] == '"':
		text, end := quoted(src, i+1)
		return tText, text, end
	case src[i] == '\'' && src[at:i] == "b":
		if src[i+1:] != "" && src[i+1] == '\\' {
			if text, end := escaped(src, i+1); end > 0 && end < len(src) && src[end] == '\'' {
				return tChar, text, end + 1
			}
			return tChar, "", 0
		}
		if i+2 < len(src) && src[i+2] == '\'' {
			return tChar, src[i+1 : i+2], i + 3
		}
	}
	return tText, "", 0
}

// quoted reads a text up to its end; -1 where it has none.
func quoted(src string, i int) (string, int) {
	var b strings.Builder
	for i < len(src) {
		switch c := src[i]; c {
		case '"':
			return b.String(), i + 1
		case '\\':
			if i+1 < len(src) && (src[i+1] == '\n' || src[i+1] == '\r') { // the line goes on
				for i++; i < len(src) && strings.IndexByte(" \t\r\n", src[i]) >= 0; i++ {
				}
				continue
			}
			text, end := escaped(src, i)
			if end < 0 {
				b.WriteByte(c)
				i++
				continue
			}
			b.WriteString(text)
			i = end
		default:
			b.WriteByte(c)
			i++
		}
	}
	return "", -1
}

// escaped reads a backslash and what it stands for.
func escaped(src string, i int) (string, int) {
	if i+1 >= len(src) {
		return "", -1
	}
	switch c := src[i+1]; c {
	case 'n':
		return "\n", i + 2
	case 'r':
		return "\r", i + 2
	case 't':
		return "\t", i + 2
	case '0':
		return "\x00", i + 2
	case '\\', '\'', '"':
		return string(c), i + 2
	case 'x':
		if i+4 <= len(src) {
			if n, err := strconv.ParseUint(src[i+2:i+4], 16, 8); err == nil {
				return string(rune(n)), i + 4
			}
		}
	case 'u':
		if end := strings.IndexByte(src[i:], '}'); end > 3 && src[i+2] == '{' {
			if n, err := strconv.ParseUint(strings.ReplaceAll(src[i+3:i+end], "_", ""), 16, 32); err == nil {
				return string(rune(n)), i + end + 1
			}
		}
	}
	return "", -1
}
