package command

import (
	"errors"
	"strings"

	"mvdan.cc/sh/v3/syntax"
)

// Misread says where no shell can read a command: the offset in bytes, and the word
// there. ok is false where one reads it.
func Misread(text string) (offset int, word string, ok bool) {
	if len(text) > maxLine {
		return 0, "", false
	}
	for _, lang := range []syntax.LangVariant{syntax.LangBash, syntax.LangPOSIX} {
		_, err := syntax.NewParser(syntax.Variant(lang)).Parse(strings.NewReader(text), "")
		var bad syntax.ParseError
		if !errors.As(err, &bad) {
			return 0, "", false
		}
		if lang == syntax.LangBash {
			offset = min(int(bad.Pos.Offset()), len(text))
		}
	}
	start := strings.LastIndexAny(text[:offset], " \t\n") + 1
	end := len(text)
	if i := strings.IndexAny(text[offset:], " \t\n"); i >= 0 {
		end = offset + i
	}
	return start, text[start:end], true
}
