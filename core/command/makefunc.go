package command

import (
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/value"
)

// Functions and conditions of make (GNU Make 4.4 manual, "Functions for Transforming
// Text", "Conditional Parts of Makefiles"). What a shell would have to print is not
// followed.

// makeFunctions are the functions that are worked out.
var makeFunctions = map[string]bool{"if": true, "or": true, "and": true, "filter": true, "filter-out": true, "subst": true, "patsubst": true, "strip": true, "findstring": true, "firstword": true, "lastword": true, "words": true, "word": true,
	"wordlist": true, "sort": true, "dir": true, "notdir": true, "basename": true, "suffix": true, "addprefix": true, "addsuffix": true, "join": true, "wildcard": true, "abspath": true, "realpath": true, "foreach": true, "info": true, "warning": true, "call": true, "value": true}

// closing is the place of the bracket that closes the one at the front; -1 where there is
// none.
func closing(text string) int {
	open, shut := text[0], byte(')')
	if open == '{' {
		shut = '}'
	}
	n := 0
	for i := range len(text) {
		switch text[i] {
		case open:
			n++
		case shut:
			if n--; n == 0 {
				return i
			}
		}
	}
	return -1
}

// arguments splits the arguments of a function at the commas that stand in no brackets.
func makeArguments(text string) (list []string) {
	depth, from := 0, 0
	for i := range len(text) {
		switch text[i] {
		case '(', '{':
			depth++
		case ')', '}':
			depth--
		case ',':
			if depth == 0 {
				list = append(list, text[from:i])
				from = i + 1
			}
		}
	}
	return append(list, text[from:])
}

// like reports whether a word is of a pattern with one %, and what stands for that.
func like(pattern, word string) (stem string, ok bool) {
	head, tail, is := strings.Cut(pattern, "%")
	if !is {
		return "", pattern == word
	}
	if len(word) < len(head)+len(tail) || !strings.HasPrefix(word, head) || !strings.HasSuffix(word, tail) {
		return "", false
	}
	return word[len(head) : len(word)-len(tail)], true
}

// function works out a function; ok is false where that is not known: what the shell
// would put in counts as that.
func (m *makefile) function(name, text string, given map[string]*value.Value, target string, needs []string, depth int) (string, bool) {
	args := makeArguments(text)
	plain := func(t string) (string, bool) {
		x, ok := m.expand(t, given, target, needs, depth)
		return x, ok && !strings.Contains(x, "${")
	}
	switch name {
	case "if":
		test, ok := plain(strings.TrimSpace(args[0]))
		if !ok || len(args) < 2 {
			return "", false
		}
		if strings.TrimSpace(test) != "" {
			return m.expand(args[1], given, target, needs, depth)
		} else if len(args) > 2 {
			return m.expand(strings.Join(args[2:], ","), given, target, needs, depth)
		}
		return "", true
	case "or", "and":
		last := ""
		for _, a := range args {
			x, ok := plain(strings.TrimSpace(a))
			if !ok {
				return "", false
			}
			if last = x; (x != "") == (name == "or") {
				return x, true
			}
		}
		return last, true
	case "foreach":
		if len(args) < 3 {
			return "", false
		}
		list, ok := plain(args[1])
		of := strings.TrimSpace(args[0])
		if !ok || len(strings.Fields(list)) > 64 {
			return "", false
		}
		old, had := m.vars[of]
		var out []string
		for _, w := range strings.Fields(list) {
			m.vars[of] = makeVar{text: w}
			x, done := plain(strings.Join(args[2:], ","))
			ok = ok && done
			out = append(out, x)
		}
		if m.vars[of] = old; !had {
			delete(m.vars, of)
		}
		return strings.Join(out, " "), ok
	case "call", "value":
		return "", false
	}
	for i := range args {
		x, ok := plain(args[i])
		if !ok {
			return "", false
		}
		args[i] = x
	}
	last := args[len(args)-1]
	words := strings.Fields(last)
	each := func(do func(w string) (string, bool)) (string, bool) {
		var out []string
		for _, w := range words {
			if x, keep := do(w); keep {
				out = append(out, x)
			}
		}
		return strings.Join(out, " "), true
	}
	need := map[string]int{"filter": 2, "filter-out": 2, "subst": 3, "patsubst": 3, "findstring": 2, "word": 2, "wordlist": 3, "addprefix": 2, "addsuffix": 2, "join": 2}[name]
	if len(args) < need {
		return "", false
	}
	number := func(t string) (int, bool) {
		n := 0
		for _, r := range strings.TrimSpace(t) {
			if r < '0' || r > '9' || n > 1<<20 {
				return 0, false
			}
			n = n*10 + int(r-'0')
		}
		return n, t != ""
	}
	switch name {
	case "filter", "filter-out":
		patterns := strings.Fields(args[0])
		return each(func(w string) (string, bool) {
			in := slices.ContainsFunc(patterns, func(p string) bool { _, ok := like(p, w); return ok })
			return w, in == (name == "filter")
		})
	case "subst":
		return strings.ReplaceAll(strings.Join(args[2:], ","), args[0], args[1]), args[0] != ""
	case "patsubst":
		return each(func(w string) (string, bool) {
			if stem, ok := like(strings.TrimSpace(args[0]), w); ok {
				return strings.Replace(strings.TrimSpace(args[1]), "%", stem, 1), true
			}
			return w, true
		})
	case "strip":
		return strings.Join(strings.Fields(strings.Join(args, ",")), " "), true
	case "findstring":
		if strings.Contains(args[1], args[0]) {
			return args[0], true
		}
		return "", true
	case "firstword", "lastword":
		if len(words) == 0 {
			return "", true
		} else if name == "firstword" {
			return words[0], true
		}
		return words[len(words)-1], true
	case "words":
		return strconv.Itoa(len(words)), true
	case "word":
		n, ok := number(args[0])
		if !ok || n == 0 || n > len(words) {
			return "", ok && n > 0
		}
		return words[n-1], true
	case "wordlist":
		from, ok := number(args[0])
		to, ok2 := number(args[1])
		if !ok || !ok2 || from == 0 {
			return "", false
		}
		if from > len(words) || to < from {
			return "", true
		}
		return strings.Join(words[from-1:min(to, len(words))], " "), true
	case "sort":
		slices.Sort(words)
		return strings.Join(slices.Compact(words), " "), true
	case "dir":
		return each(func(w string) (string, bool) {
			d, _ := path.Split(w)
			if d == "" {
				d = "./"
			}
			return d, true
		})
	case "notdir":
		return each(func(w string) (string, bool) { return w[strings.LastIndexByte(w, '/')+1:], true })
	case "basename":
		return each(func(w string) (string, bool) { return strings.TrimSuffix(w, path.Ext(w)), true })
	case "suffix":
		return each(func(w string) (string, bool) { return path.Ext(w), path.Ext(w) != "" })
	case "addprefix":
		return each(func(w string) (string, bool) { return args[0] + w, true })
	case "addsuffix":
		return each(func(w string) (string, bool) { return w + args[0], true })
	case "wildcard":
		if strings.ContainsAny(last, "*?[") || m.has == nil {
			return "", false
		}
		return each(func(w string) (string, bool) { return w, m.has(w) })
	case "info", "warning":
		return "", true
	}
	return "", false
}

// under is what a variable holds in the environment that everything is worked out under.
func (m *makefile) under(name string, v makeVar, set bool, given map[string]*value.Value, depth int) (string, bool) {
	plain := func(o value.Outcome) (string, bool) {
		// A shell reads it again.
		return o.Text, o.Kind == value.Str && !strings.ContainsAny(o.Text, "$`\"\\'")
	}
	if x := given[name]; x != nil {
		return plain(x.Under(*m.with))
	}
	text, in := m.with.Lookup(name, false)
	switch {
	case in && (!set || v.unset):
		return text, !strings.ContainsAny(text, "$`\"\\'")
	case !set:
		return "", !m.open
	case v.unknown:
		return "", false
	}
	return m.expand(v.text, given, "", nil, depth+1)
}

// decides looks at a line that is a condition, or stands in one that is decided: done says
// that nothing else is to be made of it; ok is false for one that is not understood.
func (m *makefile) decides(word, rest string, sides *[]int) (done, ok bool) {
	off := slices.ContainsFunc(*sides, func(s int) bool { return s != 1 })
	holds := func() (bool, bool) {
		rest := strings.TrimSpace(rest)
		switch word {
		case "ifdef", "ifndef":
			name, ok := m.expand(rest, m.given, "", nil, 0)
			v, set := m.vars[name]
			x, known := m.under(name, v, set, m.given, 0)
			return (x != "") == (word == "ifdef"), ok && known
		}
		var a, b string
		if strings.HasPrefix(rest, "(") {
			if closing(rest) != len(rest)-1 {
				return false, false
			}
			list := makeArguments(rest[1 : len(rest)-1])
			if len(list) != 2 {
				return false, false
			}
			a, b = list[0], list[1]
		} else {
			var list []string
			for rest != "" && (rest[0] == '"' || rest[0] == '\'') {
				end := strings.IndexByte(rest[1:], rest[0])
				if end < 0 {
					return false, false
				}
				list = append(list, rest[1:1+end])
				rest = strings.TrimSpace(rest[end+2:])
			}
			if len(list) != 2 || rest != "" {
				return false, false
			}
			a, b = list[0], list[1]
		}
		x, ok := m.expand(strings.TrimSpace(a), m.given, "", nil, 0)
		y, ok2 := m.expand(strings.TrimSpace(b), m.given, "", nil, 0)
		return (strings.TrimSpace(x) == strings.TrimSpace(y)) == (word == "ifeq"), ok && ok2
	}
	side := func() (int, bool) {
		yes, ok := holds()
		if yes {
			return 1, ok
		}
		return 0, ok
	}
	switch word {
	case "ifeq", "ifneq", "ifdef", "ifndef":
		if off {
			*sides = append(*sides, -1)
			return true, true
		}
		s, ok := side()
		*sides = append(*sides, s)
		return true, ok
	case "else":
		n := len(*sides) - 1
		if n < 0 {
			return true, false
		}
		switch s := (*sides)[n]; {
		case s == 1:
			(*sides)[n] = -1
		case s == 0:
			(*sides)[n] = 1
			if next, more, _ := strings.Cut(strings.TrimSpace(rest), " "); strings.HasPrefix(next, "if") {
				word, rest = next, more
				s, ok := side()
				(*sides)[n] = s
				return true, ok
			}
		}
		return true, true
	case "endif":
		if len(*sides) > 0 {
			*sides = (*sides)[:len(*sides)-1]
		}
		return true, true
	case "define", "endef":
		return false, false
	}
	return off, true
}
