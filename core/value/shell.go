package value

import (
	"regexp"
	"strconv"
	"strings"

	"ubique/core/place"
)

// What a shell makes of texts (POSIX.1-2024, "2.6.2 Parameter Expansion", "2.14
// Pattern Matching Notation"; GNU Bash 5.3 manual, "Shell Parameter Expansion").

// Shell is what a shell makes of a text by an operator: % %% # ## take a pattern off
// its ends, glob and regex ask whether it fits one, / and // put another text in the
// place of one, : takes a part, ^^ and ,, change its letters, length counts them.
func Shell(name string, at place.Span, of ...*Value) *Value {
	return op("shell "+name, false, at, of...)
}

// ListOf is a list of values.
func ListOf(at place.Span, of ...*Value) *Value { return &Value{Kind: List, Kids: of, At: at} }

// Both and Either join conditions, Not turns one around.
func Both(a, b *Value, at place.Span) *Value { return op("&&", false, at, a, b) }

// AnyOf holds where one of two conditions does.
func AnyOf(a, b *Value, at place.Span) *Value { return op("||", false, at, a, b) }

// Not holds where a condition does not.
func Not(a *Value) *Value { return op("!", false, a.At, a) }

// IsSet holds where a variable of the environment is set.
func IsSet(name string, at place.Span) *Value {
	return op("isset", false, at, Variable(name, ReadsUndef, at))
}

// Compared compares two whole numbers, as a shell reads them.
func Compared(name string, a, b *Value, at place.Span) *Value {
	number := func(v *Value) *Value {
		return op("||", false, at, op("parseInt", false, at, v), number(0, at))
	}
	return op(name, false, at, number(a), number(b))
}

// globs is a pattern of a shell as package regexp reads it.
func globs(p string) string {
	var b strings.Builder
	for i := 0; i < len(p); i++ {
		switch c := p[i]; c {
		case '*':
			b.WriteString(".*")
		case '?':
			b.WriteByte('.')
		case '\\':
			if i+1 < len(p) {
				i++
				b.WriteString(regexp.QuoteMeta(p[i : i+1]))
			}
		case '[':
			end := strings.IndexByte(p[min(i+2, len(p)):], ']')
			if end < 0 {
				b.WriteString(`\[`)
				continue
			}
			set := p[i+1 : i+2+end]
			if strings.HasPrefix(set, "!") {
				set = "^" + set[1:]
			}
			b.WriteString("[" + strings.ReplaceAll(set, `\`, `\\`) + "]")
			i += 2 + end
		default:
			b.WriteString(regexp.QuoteMeta(string(c)))
		}
	}
	return b.String()
}

const maxShellText = 4096

// shellOp makes an operator of two texts; patterns that cannot be read make it
// not known.
func shellOp(f func(a, b string) (Outcome, error)) operator {
	return func(a, b Outcome, _ bool) Outcome {
		x, y := a.show(false), b.show(false)
		if a.nothing() {
			x = ""
		}
		if len(x) > maxShellText || len(y) > maxShellText {
			return dontKnow("a text that is too long")
		}
		o, err := f(x, y)
		if err != nil {
			return dontKnow("a pattern of the script")
		}
		return o
	}
}

// cutting takes what a pattern fits off one end of a text, as little or as much
// as it can.
func cutting(front, much bool) operator {
	return shellOp(func(text, p string) (Outcome, error) {
		re, err := regexp.Compile(`(?s)\A(?:` + globs(p) + `)\z`)
		if err != nil {
			return Outcome{}, err
		}
		for i := range len(text) + 1 {
			n := i // bytes that go
			if much {
				n = len(text) - i
			}
			if front && re.MatchString(text[:n]) {
				return str(text[n:]), nil
			}
			if !front && re.MatchString(text[len(text)-n:]) {
				return str(text[:len(text)-n]), nil
			}
		}
		return str(text), nil
	})
}

// putting puts a text in the place of what a pattern fits; b is the list of both.
func putting(all bool) operator {
	return func(a, b Outcome, _ bool) Outcome {
		if b.Kind != List || len(b.List) != 2 {
			return dontKnow("a part of a text")
		}
		with := b.List[1].show(false)
		p := b.List[0].show(false)
		head, tail := "", ""
		switch {
		case strings.HasPrefix(p, "#"):
			p, head = p[1:], `\A`
		case strings.HasPrefix(p, "%"):
			p, tail = p[1:], `\z`
		}
		return shellOp(func(text, _ string) (Outcome, error) {
			re, err := regexp.Compile(`(?s)` + head + `(?:` + globs(p) + `)` + tail)
			if err != nil || len(text)*(len(with)+1) > 1<<20 {
				return Outcome{}, strconv.ErrRange
			}
			if all {
				return str(re.ReplaceAllLiteralString(text, with)), nil
			}
			if at := re.FindStringIndex(text); at != nil {
				return str(text[:at[0]] + with + text[at[1]:]), nil
			}
			return str(text), nil
		})(a, str(""), false)
	}
}

func init() {
	operators["shell %"] = cutting(false, false)
	operators["shell %%"] = cutting(false, true)
	operators["shell #"] = cutting(true, false)
	operators["shell ##"] = cutting(true, true)
	operators["shell /"] = putting(false)
	operators["shell //"] = putting(true)
	operators["shell glob"] = shellOp(func(text, p string) (Outcome, error) {
		yes, err := regexp.MatchString(`(?s)\A(?:`+globs(p)+`)\z`, text)
		return truth(yes), err
	})
	operators["shell regex"] = shellOp(func(text, p string) (Outcome, error) {
		yes, err := regexp.MatchString(p, text)
		return truth(yes), err
	})
	operators["shell ^^"] = shellOp(func(text, _ string) (Outcome, error) { return str(strings.ToUpper(text)), nil })
	operators["shell ,,"] = shellOp(func(text, _ string) (Outcome, error) { return str(strings.ToLower(text)), nil })
	operators["shell length"] = shellOp(func(text, _ string) (Outcome, error) { return str(strconv.Itoa(len([]rune(text)))), nil })
	operators["shell :"] = func(a, b Outcome, _ bool) Outcome {
		if b.Kind != List || len(b.List) == 0 {
			return dontKnow("a part of a text")
		}
		text := []rune(a.show(false))
		whole := func(o Outcome) (int, bool) {
			n, err := strconv.Atoi(strings.TrimSpace(o.show(false)))
			return n, err == nil
		}
		from, ok := whole(b.List[0])
		to := len(text)
		if ok && from < 0 {
			from = max(0, len(text)+from)
		}
		if len(b.List) > 1 && ok {
			var n int
			if n, ok = whole(b.List[1]); n < 0 {
				to += n
			} else {
				to = min(to, from+n)
			}
		}
		if !ok {
			return dontKnow("a part of a text")
		}
		if from = min(from, len(text)); from > to {
			return str("")
		}
		return str(string(text[from:to]))
	}
}
