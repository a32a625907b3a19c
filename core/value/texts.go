package value

import (
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// textMethods are what the methods and functions on text of each language do,
// by one word for all: their standard libraries' references (ECMA-262 22.1.3;
// Python 3.14 "str"; package strings of Go 1.26; Ruby 3.4 "String"; PHP 8.4
// "String Functions"; java.lang.String of Java 25; .NET 10 "String"; std::str of
// Rust 1.95; Elixir 1.19 "String").
var textMethods = map[string]string{
	"endswith": "endswith", "endsWith": "endswith", "end_with?": "endswith", "ends_with": "endswith", "EndsWith": "endswith", "strings.HasSuffix": "endswith", "str_ends_with": "endswith", "String.ends_with?": "endswith",
	"strings.HasPrefix": "startswith", "String.starts_with?": "startswith",
	"Contains": "holdstext", "contains": "holdstext", "strings.Contains": "holdstext", "str_contains": "holdstext", "String.contains?": "holdstext",
	"removeprefix": "removeprefix", "removePrefix": "removeprefix", "delete_prefix": "removeprefix", "strings.TrimPrefix": "removeprefix", "trim_start_matches": "removeprefix", "String.trim_leading": "removeprefix",
	"removesuffix": "removesuffix", "removeSuffix": "removesuffix", "delete_suffix": "removesuffix", "strings.TrimSuffix": "removesuffix", "trim_end_matches": "removesuffix", "String.trim_trailing": "removesuffix",
	"replaceAll": "replaceall", "gsub": "replaceall", "strings.ReplaceAll": "replaceall", "Replace": "replaceall", "String.replace": "replaceall", "sub": "replacefirst",
	"substring": "from", "Substring": "from", "substr": "from",
	"strings.ToUpper": "upper", "strings.Split": "split",
}

// replacing is what replace does, which takes one or all.
func replacing(l code.Language) string {
	if javascript(l) {
		return "replacefirst"
	}
	return "replaceall"
}

// textCall evaluates a method or a function on text, the text first; nil for
// those that are not read, and where a pattern is no plain text.
func textCall(name string, args []*Value, l code.Language, at place.Span) *Value {
	word := textMethods[name]
	if name == "replace" {
		word = replacing(l)
	}
	py := !javascript(l)
	switch word {
	case "":
		return nil
	case "holdstext":
		if len(args) == 2 {
			return op("in", py, at, args[1], args[0])
		}
	case "replaceall", "replacefirst":
		if len(args) != 3 || args[1].Kind != Str || args[2].Kind != Str || (l == code.Java || l == code.Kotlin) && name != "replace" && strings.ContainsAny(args[1].Text, `\.[]{}()*+?^$|`) {
			return nil
		}
		return &Value{Kind: Op, Text: word, Py: py, At: at, Kids: args}
	case "from":
		if len(args) == 2 && args[1].Kind == Num {
			return op(word, py, at, args...)
		}
	case "upper":
		return op(word, py, at, args[0])
	default:
		if len(args) == 2 && (word == "split" || word == "endswith" || word == "startswith" || args[1].Kind == Str) {
			return op(word, py, at, args...)
		}
	}
	return nil
}
