// Package render shows reports: as text for people, as JSON, as SARIF. Each
// is a view of one check.Report and adds nothing to it.
package render

import (
	"fmt"
	"io"
	"strings"
	"unicode"
	"unicode/utf8"
)

// View is how text is to look.
type View struct {
	Color   bool
	Width   int
	Version string
}

// Clean makes control characters and characters that change the direction of
// text visible, so that text written by others cannot act on a terminal.
func Clean(s string) string {
	clean := true
	for _, r := range s {
		if r != '\n' && r != '\t' && hidden(r) || r == utf8.RuneError {
			clean = false
			break
		}
	}
	if clean {
		return s
	}
	var b strings.Builder
	for i, r := range s {
		switch {
		case r == utf8.RuneError:
			fmt.Fprintf(&b, "\\x%02x", s[i])
		case r == '\n' || r == '\t' || !hidden(r):
			b.WriteRune(r)
		case r < 0x20:
			b.WriteRune(0x2400 + r)
		default:
			fmt.Fprintf(&b, "\\u{%x}", r)
		}
	}
	return b.String()
}

func hidden(r rune) bool {
	return unicode.IsControl(r) || unicode.Is(unicode.Cf, r) || r >= 0xe000 && r <= 0xf8ff
}

// line makes text of others fit on one line.
func line(s string) string {
	return strings.NewReplacer("\n", "␊", "\t", "    ").Replace(Clean(s))
}

// The styles, as SGR parameters (ECMA-48, 8.3.117).
const (
	bold   = "1"
	dim    = "2"
	under  = "4"
	red    = "1;31"
	yellow = "33"
	blue   = "36"
	green  = "32"
)

func (v View) paint(style, s string) string {
	if !v.Color || s == "" {
		return s
	}
	return "\x1b[" + style + "m" + s + "\x1b[0m"
}

func (v View) level(l string) string {
	return v.paint(map[string]string{"blocker": red, "risk": yellow, "advice": blue}[l], l)
}

// wrap breaks text into lines of at most width characters.
func wrap(s string, width int) []string {
	var lines []string
	cur := ""
	for w := range strings.FieldsSeq(s) {
		if cur != "" && utf8.RuneCountInString(cur)+1+utf8.RuneCountInString(w) > width {
			lines = append(lines, cur)
			cur = ""
		}
		if cur != "" {
			cur += " "
		}
		cur += w
	}
	return append(lines, cur)
}

func pad(s string, n int) string {
	if w := utf8.RuneCountInString(s); w < n {
		return s + strings.Repeat(" ", n-w)
	}
	return s
}

// printer gathers output and the first error.
type printer struct {
	w   io.Writer
	err error
}

func (p *printer) f(format string, a ...any) {
	if p.err == nil {
		_, p.err = fmt.Fprintf(p.w, format, a...)
	}
}

func count(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}
