package value

import (
	"regexp"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// A regular expression is an External whose text is pattern and whose one part
// is the expression as package regexp reads it. What that package does not
// have (looking around, references back) is not read.
const pattern = "pattern"

// compilers are the calls that make one of a text, the text first (Python 3.14
// "re", package regexp of Go 1.26, java.util.regex of Java 25, Kotlin 2.2
// "Regex", .NET 10 "Regex", Ruby 3.4 "Regexp", ECMA-262 22.2, documentation of
// the crate regex 1).
var compilers = map[string]bool{"re.compile()": true, "regexp.MustCompile()": true, "regexp.MustCompilePOSIX()": true, "Pattern.compile()": true, "java.util.regex.Pattern.compile()": true, "Regex()": true, "System.Text.RegularExpressions.Regex()": true, "Regexp.new()": true, "RegExp()": true}

// matching are the functions that ask whether a text fits, by where the pattern
// and the text stand, and how much of the text has to fit.
var matching = map[string]struct {
	pattern, text int
	fits          string
}{
	"re.match": {0, 1, "front"}, "re.fullmatch": {0, 1, "whole"}, "re.search": {0, 1, "part"},
	"regexp.MatchString": {0, 1, "part"}, "Pattern.matches": {0, 1, "whole"}, "java.util.regex.Pattern.matches": {0, 1, "whole"},
	"Regex.IsMatch": {1, 0, "part"}, "Regex.Match": {1, 0, "part"}, "preg_match": {0, 1, "part"}, "Regex.match?": {0, 1, "part"}, "Regex.run": {0, 1, "part"}, "String.match?": {1, 0, "part"},
}

// patternMethods are methods of a pattern that take the text.
var patternMethods = map[string]string{
	"test": "part", "exec": "part", "match": "part", "match?": "part", "search": "part", "fullmatch": "whole", "MatchString": "part", "FindStringSubmatch": "part", "FindString": "first",
	"IsMatch": "part", "Match": "part", "is_match": "part", "captures": "part", "matches": "whole", "matchEntire": "whole", "containsMatchIn": "part", "===": "part", "find": "part",
}

// textPatterns are methods of a text that take the pattern.
var textPatterns = map[string]string{"match": "part", "match?": "part", "matches": "whole", "replace": "replace", "replaceAll": "replace", "replaceFirst": "replace", "gsub": "replace", "sub": "replace"}

// literalPattern reads the literal of a regular expression, and the sigil of
// Elixir.
func literalPattern(src string, l code.Language, at place.Span) *Value {
	src = strings.TrimPrefix(strings.TrimPrefix(src, "~r"), "~R")
	if len(src) < 2 || len(src) > 200 {
		return unknown("a regular expression", at)
	}
	last := src[0]
	if i := strings.IndexByte("([{<", last); i >= 0 {
		last = ")]}>"[i]
	}
	end := strings.LastIndexByte(src, last)
	if end < 1 {
		return unknown("a regular expression", at)
	}
	return translated(src[1:end], src[end+1:], l, at)
}

// translated gives a pattern as package regexp reads it.
func translated(re, flags string, l code.Language, at place.Span) *Value {
	gone := unknown("a regular expression", at)
	global := strings.Contains(flags, "g")
	if strings.Contains(flags, "y") || strings.Contains(flags, "x") {
		return gone
	}
	switch own := strings.NewReplacer("u", "", "v", "", "g", "", "d", "", "o", "", "D", ""); l {
	case code.Ruby:
		flags = "m" + strings.Replace(own.Replace(flags), "m", "s", 1)
	default:
		flags = own.Replace(flags)
	}
	re = strings.NewReplacer(`\\`, `\\`, `\Z`, `\z`, `\h`, `[0-9a-fA-F]`, `\/`, `/`).Replace(re)
	if flags != "" {
		re = "(?" + flags + ")" + re
	}
	if _, err := regexp.Compile(re); err != nil || len(re) > 240 {
		return gone
	}
	v := &Value{Kind: External, Text: pattern, At: at, Kids: []*Value{text(re, at)}}
	if global {
		v.Num = 1
	}
	return v
}

// asPattern is a value that is a pattern, or with plain set a text that is taken
// for one; nil for all others.
func asPattern(v *Value, plain bool, l code.Language) *Value {
	switch {
	case v == nil:
	case v.Kind == External && v.Text == pattern:
		return v
	case v.Kind == Op && v.Text == "unwrap" && len(v.Kids) == 1: // of Rust
		return asPattern(v.Kids[0], plain, l)
	case v.Kind == External && compilers[v.Text] && len(v.Kids) > 0 && v.Kids[0].Kind == Str:
		flags := ""
		if len(v.Kids) > 1 {
			if !javascript(l) || v.Kids[1].Kind != Str {
				return nil
			}
			flags = v.Kids[1].Text
		}
		return asPattern(translated(v.Kids[0].Text, flags, l, v.At), false, l)
	case v.Kind == External && compilers[v.Text] && len(v.Kids) == 1:
		return asPattern(v.Kids[0], false, l)
	case v.Kind == Str && plain && l == code.PHP:
		return asPattern(literalPattern(v.Text, l, v.At), false, l)
	case v.Kind == Str && plain:
		return asPattern(translated(v.Text, "", l, v.At), false, l)
	}
	return nil
}

// fitting is what a text gives for a pattern: its groups, or nothing.
func fitting(p, of *Value, fits string, at place.Span) *Value {
	re := p.Kids[0].Text
	switch fits {
	case "whole":
		re = `\A(?:` + re + `)\z`
	case "front":
		re = `\A(?:` + re + `)`
	}
	m := op("match", true, at, of, text(re, at))
	if fits == "first" {
		return &Value{Kind: Cond, At: at, Kids: []*Value{m, op("index", true, at, m, number(0, at)), text("", at)}}
	}
	return m
}

// patternCall evaluates what the languages do with regular expressions; nil for
// any other call.
func (e *Eval) patternCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee, l, at := n.Kid(0), s.File.Lang, s.File.At(n)
	name := callee.Name
	if callee.Is(code.Member) {
		name = callee.Dotted()
	}
	if m, ok := matching[name]; ok && len(n.Args()) >= 2 {
		args, _ := e.args(n, s, c)
		if len(args) < 2 { // some are given by name
			return nil
		}
		if p := asPattern(args[m.pattern], true, l); p != nil {
			of := args[m.text]
			switch l {
			case code.PHP: // 1 or 0
				return &Value{Kind: Cond, At: at, Kids: []*Value{fitting(p, phpText(of), m.fits, at), number(1, at), number(0, at)}}
			case code.Python, code.Elixir:
				return fitting(p, of, m.fits, at)
			}
			return op("Boolean", true, at, fitting(p, of, m.fits, at))
		}
		return nil
	}
	if !callee.Is(code.Member) {
		return nil
	}
	of, base := textPatterns[callee.Name], patternMethods[callee.Name]
	if of == "" && base == "" && callee.Name != "group" && callee.Name != "matcher" && callee.Name != "toRegex" {
		return nil
	}
	v := e.expr(callee.Kid(0), s, c)
	args, _ := e.args(n, s, c)
	switch {
	case v.Kind == External && v.Text == "matcher" && (callee.Name == "matches" || callee.Name == "find" || callee.Name == "lookingAt") && len(args) == 0:
		return op("Boolean", true, at, fitting(v.Kids[0], v.Kids[1], map[string]string{"matches": "whole", "find": "part", "lookingAt": "front"}[callee.Name], at))
	case v.Kind == External && v.Text == "matcher" && callee.Name == "group":
		i := number(0, at)
		if len(args) == 1 {
			i = args[0]
		}
		return op("index", true, at, fitting(v.Kids[0], v.Kids[1], "part", at), i)
	case v.Kind == Op && v.Text == "match" && callee.Name == "group":
		i := number(0, at)
		if len(args) == 1 {
			i = args[0]
		}
		return op("index", true, at, v, i)
	}
	if p := asPattern(v, callee.Name == "toRegex", l); p != nil {
		switch {
		case callee.Name == "toRegex" && len(args) == 0:
			return p
		case callee.Name == "matcher" && len(args) == 1:
			return &Value{Kind: External, Text: "matcher", At: at, Kids: []*Value{p, args[0]}}
		case base == "" || len(args) != 1:
			return nil
		}
		if callee.Name == "match" && l == code.Python {
			base = "front"
		}
		m := fitting(p, args[0], base, at)
		switch callee.Name {
		case "test", "match?", "MatchString", "IsMatch", "is_match", "matches", "containsMatchIn", "===":
			return op("Boolean", true, at, m)
		}
		return m
	}
	if of == "" || len(args) == 0 {
		return nil
	}
	p := asPattern(args[0], of == "whole" || callee.Name == "replaceAll" && l == code.Java, l)
	switch {
	case p == nil:
	case of == "replace" && len(args) == 2 && args[1].Kind == Str && !strings.ContainsAny(args[1].Text, `$\`):
		all := callee.Name == "replaceAll" || callee.Name == "gsub" || p.Num == 1 || callee.Name == "replace" && !javascript(l)
		w := &Value{Kind: Op, Text: "substitute", Py: true, At: at, Kids: []*Value{v, p.Kids[0], args[1]}}
		if all {
			w.Num = 1
		}
		return w
	case of == "replace":
	case callee.Name == "match" && p.Num == 0:
		return fitting(p, v, of, at)
	case callee.Name == "match?" || callee.Name == "matches":
		return op("Boolean", true, at, fitting(p, v, of, at))
	}
	return nil
}

// patternTest evaluates text =~ pattern, text !~ pattern, and what a case
// compares with a pattern; nil for any other operator.
func patternTest(name string, a, b *Value, l code.Language, at place.Span) *Value {
	if l != code.Ruby && l != code.Elixir && l != code.Groovy {
		return nil
	}
	if asPattern(a, false, l) != nil {
		a, b = b, a
	}
	p := asPattern(b, false, l)
	if p == nil {
		return nil
	}
	if name == "=~" && l == code.Ruby || name == "!~" { // nothing fits no pattern
		a = op("||", false, at, a, text("", at))
	}
	m := fitting(p, a, "part", at)
	switch name {
	case "=~":
		return m
	case "===", "==": // as a case compares
		return op("Boolean", true, at, fitting(p, op("||", false, at, a, text("", at)), "part", at))
	case "!~":
		return op("!", true, at, m)
	case "==~":
		return op("Boolean", true, at, fitting(p, a, "whole", at))
	}
	return nil
}
