package trace

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// What the module re of Python does (Python 3.14 library reference, "re"; read
// 2026-11), and lists that are sorted by a key.

// sortedBy sorts a list by what a function gives for each.
func (m *machine) sortedBy(l *list, key, reverse any, at spot) (any, bool, error) {
	keys := make([]any, len(l.items))
	for i, x := range l.items {
		var err error
		if keys[i], err = m.call(key, undefined, []any{x}, nil, at); err != nil {
			return nil, true, err
		}
	}
	order := make([]int, len(l.items))
	for i := range order {
		order[i] = i
	}
	down, ok := truth(reverse, true)
	if !ok && reverse != nil {
		return nil, true, undecided("an order that is not known")
	}
	unlike := false
	slices.SortStableFunc(order, func(i, j int) int {
		c, ok := pyLess(keys[i], keys[j])
		if !ok || !known(keys[i]) || !known(keys[j]) {
			unlike = true
		}
		if down {
			return -c
		}
		return c
	})
	if unlike {
		return nil, true, giveUp("a list that is sorted")
	}
	out := &list{}
	for _, i := range order {
		out.items = append(out.items, l.items[i])
	}
	return out, true, nil
}

// pyPattern calls a function of re.
func (m *machine) pyPattern(fn string, args []any, keys map[string]any, at spot) (any, bool, error) {
	text, ok := first(args).(string)
	if len(args) > 0 {
		if o, isObject := args[0].(*object); isObject && o.class != nil && o.class.name == "Pattern" && o.class.builtin {
			re, _ := o.other.(*regexp.Regexp)
			return m.pyMatch(re, strings.TrimPrefix(fn, "re."), args[1:], at)
		}
	}
	if !ok || len(keys) > 0 || opaqueAmong(args) != nil || len(args) > 3 || len(args) == 3 && fn != "re.sub" {
		return dontKnow("what a text matches"), true, nil
	}
	re, err := m.compile(strings.ReplaceAll(text, `\Z`, `\z`))
	if err != nil {
		return nil, true, giveUp("a regular expression")
	}
	if fn == "re.compile" {
		o := newObject()
		o.class = &class{name: "Pattern", builtin: true, statics: newObject(), methods: newObject()}
		o.other = re
		return o, true, nil
	}
	return m.pyMatch(re, strings.TrimPrefix(fn, "re."), args[1:], at)
}

// pyMatch calls a function of a pattern.
func (m *machine) pyMatch(re *regexp.Regexp, fn string, args []any, at spot) (any, bool, error) {
	if opaqueAmong(args) != nil {
		return dontKnow("what a text matches"), true, nil
	}
	i := 0
	if fn == "sub" {
		i = 1
	}
	text, ok := at2(args, i).(string)
	if c, isContent := at2(args, i).(*content); isContent {
		text, ok = c.text, true
	}
	if !ok {
		return nil, true, raise("TypeError", "expected string")
	}
	switch fn {
	case "match", "fullmatch", "search":
		loc := re.FindStringSubmatchIndex(text)
		if fn != "search" {
			anchored, err := m.compile(map[string]string{"match": `\A(?:`, "fullmatch": `\A(?:`}[fn] + re.String() + map[string]string{"match": ")", "fullmatch": `)\z`}[fn])
			if err != nil {
				return nil, true, giveUp("a regular expression")
			}
			loc = anchored.FindStringSubmatchIndex(text)
		}
		if loc == nil {
			return nil, true, nil
		}
		o := newObject()
		o.class = &class{name: "Match", builtin: true, statics: newObject(), methods: newObject()}
		for g, name := range re.SubexpNames() {
			v := any(nil)
			if loc[2*g] >= 0 {
				v = text[loc[2*g]:loc[2*g+1]]
			}
			o.set(strconv.Itoa(g), v)
			if name != "" {
				o.set(name, v)
			}
		}
		if whole := text[:loc[0]]; len(whole) == len([]rune(whole)) && len(text) == len([]rune(text)) {
			o.set("\x00start", integer(loc[0]))
			o.set("\x00end", integer(loc[1]))
		}
		return o, true, nil
	case "sub":
		var failed error
		to, isText := first(args).(string)
		out := replaced(re, text, true, func(groups []string) string {
			if !isText {
				g := newObject()
				g.class = &class{name: "Match", builtin: true, statics: newObject(), methods: newObject()}
				for i, t := range groups {
					g.set(strconv.Itoa(i), t)
				}
				v, err := m.call(first(args), undefined, []any{g}, nil, at)
				if err != nil {
					failed = err
				}
				return pyShow(v)
			}
			t := to
			for i := len(groups) - 1; i > 0; i-- {
				t = strings.ReplaceAll(strings.ReplaceAll(t, `\`+strconv.Itoa(i), groups[i]), `\g<`+strconv.Itoa(i)+`>`, groups[i])
			}
			return t
		})
		return out, true, failed
	case "split":
		if re.NumSubexp() > 0 || len(args) > 1 {
			return nil, true, giveUp("a text that is split")
		}
		l := &list{}
		for _, p := range re.Split(text, -1) {
			l.items = append(l.items, p)
		}
		return l, true, nil
	case "findall":
		l := &list{}
		for _, g := range re.FindAllStringSubmatch(text, 1000) {
			switch len(g) {
			case 1:
				l.items = append(l.items, g[0])
			case 2:
				l.items = append(l.items, g[1])
			default:
				t := &list{tuple: true}
				for _, x := range g[1:] {
					t.items = append(t.items, x)
				}
				l.items = append(l.items, t)
			}
		}
		return l, true, nil
	}
	return nil, false, nil
}

// pyMatched calls a method of a pattern or of a match.
func (m *machine) pyMatched(o *object, name string, args []any, keys map[string]any, at spot) (any, bool, error) {
	if o.class == nil || !o.class.builtin {
		return nil, false, nil
	}
	switch o.class.name {
	case "Pattern":
		if re, ok := o.other.(*regexp.Regexp); ok {
			return m.pyMatch(re, name, args, at)
		}
	case "Match":
		get := func(k any) (any, error) {
			v, ok := o.get(show(k))
			if !ok {
				return nil, raise("IndexError", "no such group")
			}
			return v, nil
		}
		switch name {
		case "group":
			if len(args) == 0 {
				args = []any{integer(0)}
			}
			l := &list{tuple: true}
			for _, a := range args {
				v, err := get(a)
				if err != nil {
					return nil, true, err
				}
				l.items = append(l.items, v)
			}
			if len(args) == 1 {
				return l.items[0], true, nil
			}
			return l, true, nil
		case "start", "end", "span":
			from, to := o.cells["\x00start"], o.cells["\x00end"]
			if from == nil || len(args) > 0 {
				return nil, true, giveUp("where a pattern fits")
			}
			return map[string]any{"start": from.v, "end": to.v, "span": &list{items: []any{from.v, to.v}, tuple: true}}[name], true, nil
		case "groups", "groupdict":
			l, d := &list{tuple: true}, newObject()
			d.dict = true
			other := first(args) // for a group that takes no part
			if v, ok := keys["default"]; ok {
				other = v
			} else if len(args) == 0 {
				other = nil
			}
			for _, k := range o.keys {
				if k[0] == 0 {
					continue
				}
				v := o.cells[k].v
				if v == nil {
					v = other
				}
				if _, err := strconv.Atoi(k); err != nil {
					d.set(k, v)
				} else if k != "0" {
					l.items = append(l.items, v)
				}
			}
			if name == "groups" {
				return l, true, nil
			}
			return d, true, nil
		}
	}
	return nil, false, nil
}
