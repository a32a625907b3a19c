package trace

import (
	"math"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// What the core classes and the standard library of Ruby do with texts, numbers,
// lists, hashes and the environment (documentation of Ruby 3.4: String, Integer,
// Array, Hash, Enumerable, Kernel, ENV, File, OptionParser, Struct, Data, Psych;
// read 2026-11).

// rbShow writes a value as to_s does.
func rbShow(v any) string {
	switch v := v.(type) {
	case nil, undef:
		return ""
	case float64:
		s := strconv.FormatFloat(v, 'f', -1, 64)
		if !strings.ContainsAny(s, ".IN") {
			s += ".0"
		}
		return s
	case symbol:
		return string(v)
	case *class:
		return v.name
	case *object:
		if msg, ok := v.get("message"); ok {
			return rbShow(msg)
		}
	}
	return show(v)
}

// rbInspect is a value as inspect writes it (Ruby 3.1 to 3.3); ok is false for what is not
// plain data.
func rbInspect(v any, depth int) (string, bool) {
	if depth > 8 {
		return "", false
	}
	switch x := v.(type) {
	case nil:
		return "nil", true
	case bool, integer, float64:
		return rbShow(x), true
	case symbol:
		if t := string(x); t != "" && strings.IndexFunc(t, func(r rune) bool {
			return r != '_' && (r < 'a' || r > 'z') && (r < 'A' || r > 'Z') && (r < '0' || r > '9')
		}) < 0 && (t[0] < '0' || t[0] > '9') {
			return ":" + t, true
		}
	case string:
		if strings.IndexFunc(x, func(r rune) bool { return r < ' ' || r > '~' || r == '#' }) < 0 {
			return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`).Replace(x) + `"`, true
		}
	case *list:
		if x.set {
			return "", false
		}
		parts := make([]string, len(x.items))
		for i, y := range x.items {
			t, ok := rbInspect(y, depth+1)
			if !ok {
				return "", false
			}
			parts[i] = t
		}
		return "[" + strings.Join(parts, ", ") + "]", true
	}
	return "", false
}

// rbText is what to_s of a value gives, which a class may say itself.
func (m *machine) rbText(v any, at spot) (string, error) {
	switch x := v.(type) {
	case *object:
		if f, _ := m.rbFind(x, "to_s"); f != nil && x.class != nil {
			t, err := m.rbInvoke(f, x, nil, nil, nil, at)
			if err != nil {
				return "", err
			}
			if s, ok := t.(string); ok {
				return s, nil
			}
			return "", giveUp("an object as text")
		}
		if _, ok := x.get("message"); !ok {
			return "", giveUp("an object as text")
		}
	case *list, *function, *envMap, *rbRange:
		return "", giveUp("a list as text")
	case *content:
		return x.text, nil
	}
	return rbShow(v), nil
}

// rbRange is a range of whole numbers; open ones have no end.
type rbRange struct {
	from, to any
	less     bool // without its end
}

func (r *rbRange) has(v any) bool {
	x, ok := toNumber(v)
	_, isText := v.(string)
	if !ok || isText || v == nil {
		return false
	}
	if r.from != nil {
		if f, _ := toNumber(r.from); x < f {
			return false
		}
	}
	if r.to != nil {
		if t, _ := toNumber(r.to); x > t || r.less && x == t {
			return false
		}
	}
	return true
}

// rbItems lists what is gone through.
func (m *machine) rbItems(v any) ([]any, error) {
	switch v := v.(type) {
	case nil:
		return nil, nil
	case *list:
		return v.items, nil
	case *rbRange:
		from, ok1 := v.from.(integer)
		to, ok2 := v.to.(integer)
		if !ok1 || !ok2 || to-from > maxItems {
			return nil, giveUp("a range without an end")
		}
		if v.less {
			to--
		}
		var l []any
		for i := from; i <= to; i++ {
			l = append(l, i)
		}
		return l, nil
	case *object:
		if v.dict {
			var l []any
			for _, k := range v.keys {
				l = append(l, &list{items: []any{rbUnkey(k), v.cells[k].v}})
			}
			return l, nil
		}
		if v.class != nil && v.class.name == "Set" {
			var l []any
			for _, k := range v.keys {
				l = append(l, v.cells[k].v)
			}
			return l, nil
		}
	case *envMap:
		var l []any
		for _, k := range m.envKeys() {
			l = append(l, &list{items: []any{k, m.env.text(k)}})
		}
		return l, nil
	case *content:
		return m.items(v, nil)
	case string, symbol, integer, float64, bool:
		return []any{v}, nil
	case *opaque:
		return nil, undecided("all of %s", v.String())
	}
	return nil, undecided("all of what is not known")
}

// rbCase reports whether a case takes a value: pattern === value.
func (m *machine) rbCase(of, v any, s *scope, at spot) (takes, ok bool, err error) {
	switch p := of.(type) {
	case *class:
		o, isObject := v.(*object)
		return isObject && derives(o.class, p), known(v), nil
	case *rbRange:
		return p.has(v), known(v), nil
	case *pattern:
		text, isText := v.(string)
		if sym, isSym := v.(symbol); isSym {
			text, isText = string(sym), true
		}
		if !isText {
			return false, known(v), nil
		}
		r, err := m.rbMatch(p, text)
		return r != nil, true, err
	case *function:
		x, err := m.rbYield(p, []any{v}, at)
		if err != nil {
			return false, false, err
		}
		yes, ok := s.truth(x)
		return yes, ok, nil
	case *list:
		same, ok := rbEqual(p, v)
		return same, ok, nil
	case *opaque:
		if is, ok := rbKindOf(v, p.path); ok {
			return is, true, nil
		}
		return false, false, nil
	}
	same, ok := rbEqual(of, v)
	return same, ok, nil
}

// rbKindOf reports whether a value is of a class of the language.
func rbKindOf(v any, name string) (is, ok bool) {
	if !known(v) {
		return false, false
	}
	kinds := map[string]bool{}
	switch x := v.(type) {
	case nil:
		kinds["NilClass"] = true
	case bool:
		kinds[map[bool]string{true: "TrueClass", false: "FalseClass"}[x]] = true
	case integer:
		kinds["Integer"], kinds["Numeric"], kinds["Comparable"] = true, true, true
	case float64:
		kinds["Float"], kinds["Numeric"], kinds["Comparable"] = true, true, true
	case string:
		kinds["String"], kinds["Comparable"] = true, true
	case symbol:
		kinds["Symbol"] = true
	case *list:
		kinds["Array"], kinds["Enumerable"] = true, true
	case *rbRange:
		kinds["Range"], kinds["Enumerable"] = true, true
	case *function:
		kinds["Proc"] = true
	case *object:
		if x.dict {
			kinds["Hash"], kinds["Enumerable"] = true, true
		} else if x.class != nil {
			for _, c := range x.class.line() {
				for n := c.name; n != ""; n = rbErrors[n] {
					kinds[n] = true
				}
				for _, b := range c.bases {
					if b, ok := b.(*opaque); ok {
						for n := b.path; n != ""; n = rbErrors[n] {
							kinds[n] = true
						}
					}
				}
			}
		}
	default:
		return false, false
	}
	return kinds[name] || name == "Object" || name == "BasicObject", true
}

// rbEqual compares as == does.
func rbEqual(a, b any) (same, ok bool) { return rbSame(a, b, &reach{}) }

func rbSame(a, b any, r *reach) (same, ok bool) {
	if !r.in() {
		return false, false
	}
	defer r.out()
	if !known(a) || !known(b) {
		return equals(a, b, true)
	}
	switch x := a.(type) {
	case nil:
		return b == nil, true
	case bool:
		y, isBool := b.(bool)
		return isBool && x == y, true
	case symbol:
		y, isSym := b.(symbol)
		return isSym && x == y, true
	case string:
		y, isText := b.(string)
		return isText && x == y, true
	case integer, float64:
		switch b.(type) {
		case integer, float64:
			p, _ := toNumber(a)
			q, _ := toNumber(b)
			return p == q, true
		}
		return false, true
	case *list:
		y, isList := b.(*list)
		if !isList || len(x.items) != len(y.items) {
			return false, true
		}
		if x == y {
			return true, true
		}
		for i := range x.items {
			if same, ok := rbSame(x.items[i], y.items[i], r); !ok || !same {
				return same, ok
			}
		}
		return true, true
	case *object:
		y, isObject := b.(*object)
		if !isObject || x == y {
			return isObject, true
		}
		alike := x.class != nil && x.class == y.class && rbStruct(x.class) // field by field
		if x.dict && y.dict || alike {
			if len(x.keys) != len(y.keys) {
				return false, true
			}
			for _, k := range x.keys {
				w, there := y.get(k)
				if !there {
					return false, true
				}
				if same, ok := rbSame(x.cells[k].v, w, r); !ok || !same {
					return same, ok
				}
			}
			return true, true
		}
		return false, !x.dict && !y.dict && len(x.class.tupled) == 0
	case *class, *function, *envMap, *rbRange, *pattern:
		return a == b, true
	}
	return false, false
}

func (m *machine) rbMatch(p *pattern, text string) (any, error) {
	re, _, err := p.compiled()
	if err != nil {
		return nil, err
	}
	loc := re.FindStringSubmatchIndex(text)
	g := m.rb().globals
	for i := 1; i < 10; i++ {
		g["$"+strconv.Itoa(i)] = nil
	}
	g["$~"] = nil
	if loc == nil {
		return nil, nil
	}
	o := newObject()
	o.class = &class{name: "MatchData", builtin: true, statics: newObject(), methods: newObject()}
	for i, name := range re.SubexpNames() {
		v := any(nil)
		if loc[2*i] >= 0 {
			v = text[loc[2*i]:loc[2*i+1]]
		}
		o.set(numberKey+strconv.Itoa(i), v)
		if name != "" {
			o.set(name, v)
		}
		if i > 0 && i < 10 {
			g["$"+strconv.Itoa(i)] = v
		}
	}
	o.set("begin", integer(loc[0]))
	g["$~"] = o
	return o, nil
}

func (m *machine) rbOperate(name string, a, b any, s *scope, at spot) (any, error) {
	if o, ok := a.(*object); ok && !o.dict {
		if f, _ := m.rbFind(o, name); f != nil {
			return m.rbInvoke(f, a, []any{b}, nil, nil, at)
		}
	}
	switch name {
	case "==", "!=":
		if at.n.Alias == code.When || at.n.Alias == code.Again { // a case: its pattern decides
			takes, ok, err := m.rbCase(b, a, s, at)
			if err != nil {
				return nil, err
			}
			if !ok {
				return dontKnow("whether a case fits"), nil
			}
			return takes, nil
		}
		same, ok := rbEqual(a, b)
		if !ok {
			return dontKnow("whether two things are the same"), nil
		}
		return same == (name == "=="), nil
	case "===":
		takes, ok, err := m.rbCase(a, b, s, at)
		if err != nil {
			return nil, err
		}
		if !ok {
			return dontKnow("whether a case fits"), nil
		}
		return takes, nil
	case "=~", "!~":
		p, isPattern := b.(*pattern)
		t, isText := a.(string)
		if !isPattern {
			p, isPattern = a.(*pattern)
			t, isText = b.(string)
		}
		if !isPattern {
			return dontKnow("whether a text fits"), nil
		}
		if !isText {
			if a == nil || b == nil {
				return name == "!~", nil
			}
			return dontKnow("whether a text fits"), nil
		}
		r, err := m.rbMatch(p, t)
		if err != nil {
			return nil, err
		}
		if name == "!~" {
			return r == nil, nil
		}
		if o, ok := r.(*object); ok {
			v, _ := o.get("begin")
			return v, nil
		}
		return nil, nil
	case "..", "...":
		return &rbRange{a, b, name == "..."}, nil
	case "<<":
		switch x := a.(type) {
		case *list:
			if len(x.items) >= maxItems {
				return nil, spent("a list that is too long")
			}
			if x.unique && slices.ContainsFunc(x.items, func(y any) bool { same, _ := rbEqual(b, y); return same }) {
				return x, nil
			}
			x.items = append(x.items, b)
			return x, nil
		case string:
			t, err := m.rbText(b, at)
			if err != nil {
				return nil, err
			}
			if len(x)+len(t) > maxText {
				return nil, spent("a text that is too long")
			}
			return x + t, nil
		}
	case "<":
		if c, ok := a.(*class); ok {
			if d, ok := b.(*class); ok {
				return c != d && derives(c, d), nil
			}
		}
	}
	for _, x := range []any{a, b} {
		if o, ok := x.(*opaque); ok {
			return dontKnow("what is made of " + o.String()), nil
		}
	}
	switch x := a.(type) {
	case nil:
		return nil, raise("NoMethodError", "undefined method "+name+" for nil")
	case string:
		switch y := b.(type) {
		case string:
			switch name {
			case "+":
				if len(x)+len(y) > maxText {
					return nil, spent("a text that is too long")
				}
				return x + y, nil
			case "<", ">", "<=", ">=":
				return ordered(name, strings.Compare(x, y)), nil
			case "<=>":
				return integer(strings.Compare(x, y)), nil
			case "%":
				return m.rbFormat(x, []any{y}, at)
			}
		case integer:
			if name == "*" {
				if y < 0 || len(x)*int(y) > maxText {
					return nil, raise("ArgumentError", "argument too big")
				}
				return strings.Repeat(x, int(y)), nil
			}
		case *list:
			if name == "%" {
				return m.rbFormat(x, y.items, at)
			}
		}
		if name == "%" {
			return m.rbFormat(x, []any{b}, at)
		}
		return nil, mistaken(x, b, "TypeError", "no implicit conversion into String")
	case *list:
		y, ok := b.(*list)
		switch {
		case ok && (name == "+" || name == "|"):
			l := &list{items: slices.Clone(x.items)}
			for _, v := range y.items {
				if name == "|" && slices.ContainsFunc(l.items, func(w any) bool { same, _ := rbEqual(v, w); return same }) {
					continue
				}
				l.items = append(l.items, v)
			}
			return l, nil
		case ok && (name == "-" || name == "&"):
			l := &list{}
			for _, v := range x.items {
				if slices.ContainsFunc(y.items, func(w any) bool { same, _ := rbEqual(v, w); return same }) == (name == "&") {
					l.items = append(l.items, v)
				}
			}
			return l, nil
		case name == "*":
			if sep, ok := b.(string); ok {
				return m.rbJoin(x.items, sep, at)
			}
		}
		return nil, giveUp("what %s of a list gives", name)
	case integer, float64:
		switch b.(type) {
		case integer, float64:
		case nil, string:
			if comparing[name] {
				return nil, raise("ArgumentError", "comparison failed")
			}
			return nil, certainly("TypeError", "no number")
		default:
			return nil, giveUp("what %s gives", name)
		}
		if name == "<=>" {
			p, _ := toNumber(a)
			q, _ := toNumber(b)
			return integer(compare(p, q)), nil
		}
		if name == "/" {
			_, f1 := a.(float64)
			_, f2 := b.(float64)
			if !f1 && !f2 {
				name = "//"
			} else if q, _ := toNumber(b); q == 0 { // without an error
				p, _ := toNumber(a)
				return p / q, nil
			}
		}
		return pyOperate(name, a, b)
	}
	return nil, giveUp("what %s gives", name)
}

// rbFormat is format of Kernel.
func (m *machine) rbFormat(format string, args []any, at spot) (any, error) {
	if o := opaqueAmong(args); o != nil {
		return dontKnow("a text with " + o.String()), nil
	}
	if o, ok := first(args).(*object); ok && o.dict && len(args) == 1 { // %{name}, %<name>d
		var b strings.Builder
		for i := 0; i < len(format); i++ {
			if format[i] != '%' || i+1 == len(format) {
				b.WriteByte(format[i])
				continue
			}
			closing := map[byte]string{'{': "}", '<': ">"}[format[i+1]]
			if format[i+1] == '%' {
				b.WriteByte('%')
				i++
				continue
			}
			end := strings.Index(format[i:], closing)
			if closing == "" || end < 0 {
				return nil, giveUp("a format that is not followed")
			}
			v, ok := o.get(symbolKey + format[i+2:i+end])
			if !ok {
				return nil, raise("KeyError", "key not found")
			}
			t, err := m.rbText(v, at)
			if err != nil {
				return nil, err
			}
			b.WriteString(t)
			if i += end; closing == ">" {
				if i++; i == len(format) || strings.IndexByte("sdi", format[i]) < 0 {
					return nil, giveUp("a format that is not followed")
				}
			}
		}
		return b.String(), nil
	}
	var failed error
	out, ok := verbs(format, args, func(verb byte, v any) (any, bool) {
		t, err := m.rbText(v, at)
		if err != nil {
			failed = err
			return "", false
		}
		switch verb {
		case 'd', 'i', 'x', 'X', 'o', 'b':
			switch x := v.(type) {
			case string:
				i, ok := rbInteger(x)
				return integer(i), ok
			case integer:
				return x, x >= 0 || verb == 'd' || verb == 'i'
			case float64:
				return integer(math.Floor(x)), true
			}
			return "", false
		case 'f':
			switch x := v.(type) {
			case integer:
				return float64(x), true
			case float64:
				return x, true
			}
			return "", false
		}
		return t, verb == 's'
	})
	if failed != nil {
		return nil, failed
	}
	if !ok {
		return nil, giveUp("a format that is not followed")
	}
	return out, nil
}

func (m *machine) rbJoin(items []any, sep string, at spot) (any, error) {
	if o := opaqueAmong(items); o != nil {
		return dontKnow("a text with " + o.String()), nil
	}
	if err := m.deeper(); err != nil {
		return nil, err
	}
	defer m.higher()
	parts := make([]string, 0, len(items))
	for _, x := range items {
		if l, ok := x.(*list); ok {
			t, err := m.rbJoin(l.items, sep, at)
			if err != nil {
				return nil, err
			}
			s, _ := t.(string)
			parts = append(parts, s)
			continue
		}
		t, err := m.rbText(x, at)
		if err != nil {
			return nil, err
		}
		parts = append(parts, t)
	}
	return strings.Join(parts, sep), nil
}

// rbInteger reads a text as Integer() does: all of it.
func rbInteger(s string) (int, bool) {
	t := strings.TrimSpace(s)
	if t == "" || strings.HasPrefix(t, "_") || strings.HasSuffix(t, "_") || strings.Contains(t, "__") {
		return 0, false
	}
	i, err := strconv.ParseInt(strings.ReplaceAll(t, "_", ""), 0, 64)
	return int(i), err == nil
}

// rbToI reads the number at the front of a text, as to_i does; 0 for none.
func rbToI(s string) integer {
	t := strings.ReplaceAll(strings.TrimSpace(s), "_", "")
	end := 0
	if end < len(t) && (t[0] == '-' || t[0] == '+') {
		end++
	}
	for end < len(t) && t[end] >= '0' && t[end] <= '9' {
		end++
	}
	i, _ := strconv.ParseInt(t[:end], 10, 64)
	return integer(i)
}

// rbBuiltin calls a method that Ruby has by itself; done is false where there is
// none of that name.
func (m *machine) rbBuiltin(self any, name string, args []any, kw *object, block any, s *scope, at spot) (v any, done bool, err error) {
	for _, a := range args {
		if x, ok := a.(*list); ok {
			if err := m.use(len(x.items)); err != nil {
				return nil, true, err
			}
		}
	}
	switch x := self.(type) {
	case *class:
		if v, done, err := m.rbConfigured(x, name, args, kw, block, at); done || err != nil {
			return v, true, err
		}
	case *object:
		if x.class != nil && x.class.builtin && x.class.name == "Config" {
			return m.rbSetting(x, name, args, kw, at)
		}
	}
	if _, isOpaque := self.(*opaque); !isOpaque {
		if v, done, err := m.rbObject(self, name, args, kw, block, s, at); done || err != nil {
			return v, true, err
		}
	}
	switch x := self.(type) {
	case nil:
		switch name {
		case "to_s", "inspect":
			return "", true, nil
		case "to_i":
			return integer(0), true, nil
		case "to_f":
			return 0.0, true, nil
		case "to_a":
			return &list{}, true, nil
		case "to_h":
			o := newObject()
			o.dict = true
			return o, true, nil
		case "frozen?", "itself", "freeze", "dup", "clone":
			if name == "frozen?" {
				return true, true, nil
			}
			return nil, true, nil
		case "empty?":
			return nil, true, raise("NoMethodError", "undefined method empty? for nil")
		case "blank?":
			return true, true, nil
		case "present?":
			return false, true, nil
		case "presence":
			return nil, true, nil
		}
	case bool:
		switch name {
		case "to_s":
			return show(x), true, nil
		case "&", "|":
			yes, ok := s.truth(first(args))
			return (name == "&" && x && yes) || (name == "|" && (x || yes)), ok, nil
		case "blank?":
			return !x, true, nil
		case "present?":
			return x, true, nil
		}
	case string:
		if kw != nil && (name == "gsub" || name == "sub") { // what each text becomes
			args = append(slices.Clone(args), kw)
		}
		return m.rbString(x, name, args, block, s, at)
	case symbol:
		switch name {
		case "to_s", "name", "id2name":
			return string(x), true, nil
		case "to_sym":
			return x, true, nil
		case "to_proc":
			return m.rbProc(x), true, nil
		case "upcase", "downcase", "capitalize":
			v, done, err := m.rbString(string(x), name, args, block, s, at)
			if t, ok := v.(string); ok {
				return symbol(t), done, err
			}
			return v, done, err
		}
		return m.rbString(string(x), name, args, block, s, at)
	case integer, float64:
		return m.rbNumber(x, name, args, block, s, at)
	case *list:
		return m.rbList(x, name, args, kw, block, s, at)
	case *rbRange:
		switch name {
		case "include?", "cover?", "member?", "===":
			if !known(first(args)) {
				return dontKnow("whether a range holds something"), true, nil
			}
			return x.has(first(args)), true, nil
		case "begin", "min", "first":
			if len(args) == 0 {
				return x.from, true, nil
			}
		case "end", "max", "last":
			if len(args) == 0 && !x.less {
				return x.to, true, nil
			}
		case "step":
			step, ok := first(args).(integer)
			items, err := m.rbItems(x)
			if err != nil || !ok || step < 1 {
				return nil, true, giveUp("a range with steps")
			}
			l := &list{}
			for i := 0; i < len(items); i += int(step) {
				l.items = append(l.items, items[i])
			}
			return m.rbEach(l, block, l, at)
		}
		if x.to == nil && (name == "each" || name == "find" || name == "detect") { // without an end
			from, ok := x.from.(integer)
			if !ok {
				return nil, true, giveUp("a range without an end")
			}
			for i := range integer(maxTurns) {
				r, err := m.rbYield(block, []any{from + i}, at)
				if err != nil {
					return nil, true, err
				}
				if yes, ok := s.truth(r); name != "each" && yes && ok {
					return from + i, true, nil
				}
			}
			return nil, true, giveUp("a range without an end")
		}
		items, err := m.rbItems(x)
		if err != nil {
			return nil, true, err
		}
		return m.rbList(&list{items: items}, name, args, kw, block, s, at)
	case *envMap:
		return m.rbEnv(name, args, block, s, at)
	case *object:
		switch {
		case x.dict:
			return m.rbHash(x, name, args, kw, block, s, at)
		case x.class != nil && x.class.builtin:
			return m.rbSpecial(x, name, args, kw, block, s, at)
		case x.class != nil && rbFails(x.class) && (name == "message" || name == "full_message" || name == "to_s" || name == "backtrace" || name == "cause"):
			msg, ok := x.get("message")
			switch {
			case name == "backtrace" || name == "cause":
				return nil, true, nil
			case !ok || msg == any(undefined) || msg == nil:
				msg = x.class.name
			}
			return msg, true, nil
		case x.class != nil && rbStruct(x.class):
			if v, done, err := m.rbFields(x, name, args, block, at); done || err != nil {
				return v, done, err
			}
			return m.rbKernel(self, name, args, kw, block, s, at)
		case x == m.rb().main || x.class != nil:
			return m.rbKernel(self, name, args, kw, block, s, at)
		}
	case *class:
		return m.rbClassMethod(x, name, args, kw, block, s, at)
	case *function:
		switch name {
		case "call", "()", "yield", "===", "[]":
			v, err := m.rbInvoke(x, x.this, args, kw, block, at)
			if x.native != nil {
				v, err = x.native(m, nil, args, nil, at)
			}
			return v, true, err
		case "to_proc":
			return x, true, nil
		case "curry", "arity", "parameters", "lambda?":
			return nil, true, giveUp("the method %s of a function", name)
		case ">>":
			g := first(args)
			return &function{native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
				v, err := m.rbInvoke(x, x.this, a, nil, nil, at)
				if err != nil {
					return nil, err
				}
				return m.rbSend(g, "call", []any{v}, nil, nil, s, at)
			}}, true, nil
		}
	case *pattern:
		switch name {
		case "match", "match?", "===", "=~":
			t, ok := first(args).(string)
			if sym, isSym := first(args).(symbol); isSym {
				t, ok = string(sym), true
			}
			if !ok {
				if first(args) == nil {
					return map[bool]any{true: false, false: nil}[name == "match?" || name == "==="], true, nil
				}
				return dontKnow("whether a text fits"), true, nil
			}
			r, err := m.rbMatch(x, t)
			if name == "match?" || name == "===" {
				return r != nil, true, err
			}
			return r, true, err
		}
	case *content:
		switch name {
		case "lines", "each_line", "readlines":
			items, err := m.items(x, nil)
			if err != nil {
				return nil, true, err
			}
			l := &list{items: items}
			if name == "each_line" && block != nil {
				return m.rbEach(l, block, x, at)
			}
			return l, true, nil
		case "to_s", "read", "force_encoding", "encode", "dup", "freeze", "result":
			return x, true, nil
		}
		return m.rbString(x.text, name, args, block, s, at)
	case *opaque:
		return m.rbLibrary(x, name, args, kw, block, s, at)
	case *super:
		return nil, false, nil
	}
	return nil, false, nil
}

// rbEach calls a block for each.
func (m *machine) rbEach(l *list, block any, back any, at spot) (any, bool, error) {
	if block == nil { // what goes through it from outside
		return &list{items: slices.Clone(l.items), gen: l.gen, set: l.set}, true, nil
	}
	for i := 0; i < len(l.items); i++ {
		if _, err := m.rbYield(block, []any{l.items[i]}, at); err != nil {
			return nil, true, err
		}
	}
	return back, true, nil
}

// rbObject are the methods that all objects have.
func (m *machine) rbObject(self any, name string, args []any, kw *object, block any, s *scope, at spot) (v any, done bool, err error) {
	text := func(i int) string { return rbShow(at2(args, i)) }
	switch name {
	case "freeze", "dup", "clone", "itself", "deep_dup", "taint", "untaint":
		switch x := self.(type) {
		case *list:
			if name != "freeze" && name != "itself" {
				return &list{items: slices.Clone(x.items)}, true, nil
			}
		case *object:
			if name != "freeze" && name != "itself" {
				w := x.with(nil)
				w.dict = x.dict
				return w, true, nil
			}
		}
		return self, true, nil
	case "nil?":
		return self == nil, true, nil
	case "!":
		yes, ok := s.truth(self)
		return !yes, ok, nil
	case "==", "!=", "eql?", "equal?":
		if len(args) == 1 {
			same, ok := rbEqual(self, args[0])
			if !ok {
				return dontKnow("whether two things are the same"), true, nil
			}
			return same == (name != "!="), true, nil
		}
	case "is_a?", "kind_of?", "instance_of?":
		switch c := first(args).(type) {
		case *class:
			o, ok := self.(*object)
			return ok && derives(o.class, c), true, nil
		case *opaque:
			if is, ok := rbKindOf(self, c.path); ok {
				return is, true, nil
			}
		}
		return dontKnow("what class something is of"), true, nil
	case "respond_to?":
		if m.rbHas(self, text(0)) {
			return true, true, nil
		}
		if o, ok := self.(*object); ok && o.class != nil && !o.dict && (o.class.readable[text(0)] || o.class.name == "OpenStruct" && o.cells["@"+text(0)] != nil) {
			return true, true, nil
		}
		if o, ok := self.(*object); ok && !o.dict {
			if f, _ := m.rbFind(o, "respond_to_missing?"); f != nil {
				v, err := m.rbInvoke(f, o, []any{symbol(text(0)), false}, nil, nil, at)
				return v, true, err
			}
		}
		switch self.(type) {
		case string, integer, nil, *list, *object, symbol, *function:
			return rbResponds(self, text(0)), true, nil
		}
		return dontKnow("what something can do"), true, nil
	case "send", "public_send", "__send__":
		if len(args) == 0 || !known(args[0]) {
			return nil, true, giveUp("a method that is named while the program runs")
		}
		v, err := m.rbSend(self, text(0), args[1:], kw, block, s, at)
		return v, true, err
	case "tap":
		if _, err := m.rbYield(block, []any{self}, at); err != nil {
			return nil, true, err
		}
		return self, true, nil
	case "then", "yield_self":
		v, err := m.rbYield(block, []any{self}, at)
		return v, true, err
	case "instance_variable_get":
		if o, ok := self.(*object); ok {
			v, _ := o.get(text(0))
			if v == any(undefined) {
				v = nil
			}
			return v, true, nil
		}
	case "instance_variable_set":
		if o, ok := self.(*object); ok && len(args) == 2 {
			o.set(text(0), args[1])
			return args[1], true, nil
		}
	case "instance_eval", "instance_exec", "class_eval", "module_eval", "class_exec":
		f, ok := block.(*function)
		if c, isFile := first(args).(*content); isFile && name == "instance_eval" && !ok { // a file of settings
			return rbDone(m.rbEvalText(c.text, pathText(at2(args, 1)), self, s))
		}
		if t, isText := first(args).(string); isText && name == "instance_eval" && !ok {
			return rbDone(m.rbEvalText(t, pathText(at2(args, 1)), self, s))
		}
		if !ok || f.node == nil {
			return nil, true, giveUp("code in a text")
		}
		if c, isClass := self.(*class); isClass && name[0] != 'i' {
			return nil, true, m.rbInside(c, f.node.Kid(1), f.scope)
		}
		w := *f
		w.moved = true
		with := args
		if name == "instance_eval" {
			with = []any{self}
		}
		v, err := m.rbRun(&w, self, with, nil, nil, at)
		if l, isLeave := err.(*leave); isLeave && l.kind == "continue" {
			return l.v, true, nil
		}
		return v, true, err
	case "define_singleton_method":
		if f, ok := block.(*function); ok {
			switch x := self.(type) {
			case *class:
				x.statics.set(text(0), f)
				return symbol(text(0)), true, nil
			case *object:
				x.set("\x00own "+text(0), f)
				return symbol(text(0)), true, nil
			}
		}
	case "method":
		n := text(0)
		return &function{name: n, native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
			return m.rbSend(self, n, a, nil, nil, s, at)
		}}, true, nil
	case "class":
		switch x := self.(type) {
		case *object:
			if x.class != nil && !x.dict {
				return x.class, true, nil
			}
		}
		for _, n := range []string{"String", "Integer", "Float", "Symbol", "Array", "Hash", "NilClass", "TrueClass", "FalseClass", "Proc"} {
			if is, _ := rbKindOf(self, n); is {
				return m.package1(n), true, nil
			}
		}
	case "object_id", "hash":
		return dontKnow("the number of an object"), true, nil
	case "to_json", "inspect", "to_yaml":
		if t, ok := rbInspect(self, 0); ok && name == "inspect" {
			return t, true, nil
		}
		return dontKnow("a text of data"), true, nil
	case "instance_variables", "methods", "singleton_class":
		return dontKnow(name), true, nil
	case "in?":
		ok1, ok2 := m.contains(first(args), self, true)
		if !ok2 {
			return dontKnow("whether something is among others"), true, nil
		}
		return ok1, true, nil
	case "extend":
		for _, a := range args {
			if o, ok := a.(*opaque); ok && strings.ReplaceAll(o.path, "::", ".") == "Dry.Configurable" {
				if x, isClass := self.(*class); isClass && x.settings == nil {
					x.settings = rbSettings()
				}
			}
			if c, ok := a.(*class); ok {
				if x, isClass := self.(*class); isClass {
					if x == c {
						x.selfish = true
					}
					x.extended = append(x.extended, c)
				}
			}
		}
		return self, true, nil
	case "try":
		if self == nil {
			return nil, true, nil
		}
		v, err := m.rbSend(self, text(0), args[min(1, len(args)):], kw, block, s, at)
		return v, true, err
	}
	return nil, false, nil
}

// rbResponds tells what the core classes can do of what is asked most.
func rbResponds(self any, name string) bool {
	switch name {
	case "to_s", "nil?", "freeze", "inspect":
		return true
	case "to_i":
		switch self.(type) {
		case string, integer, float64, nil:
			return true
		}
	case "to_str", "upcase":
		_, ok := self.(string)
		return ok
	case "each", "map", "first":
		if _, ok := self.(*list); ok {
			return true
		}
		o, ok := self.(*object)
		return ok && o.dict
	case "key?", "fetch", "to_h", "keys":
		o, ok := self.(*object)
		return ok && o.dict
	case "to_ary", "to_a":
		_, ok := self.(*list)
		return ok
	case "call", "to_proc":
		_, ok := self.(*function)
		return ok
	case "empty?", "length", "size":
		switch x := self.(type) {
		case string, *list, symbol:
			return true
		case *object:
			return x.dict
		}
	}
	return false
}

// rbBang are methods that change a text; without the sign they give a new one.
func (m *machine) rbBang(text string, name string, args []any, block any, s *scope, at spot) (any, bool, error) {
	v, done, err := m.rbString(text, strings.TrimSuffix(name, "!"), args, block, s, at)
	if !done || err != nil {
		return v, done, err
	}
	k := at.n.Kid(0)
	if k.Is(code.Member) {
		k = k.Kid(0)
	}
	if !k.Is(code.Name) && !(k.Is(code.Member) && ofSelf(k)) {
		return nil, true, giveUp("a text that is changed")
	}
	if v == any(text) {
		return nil, true, nil
	}
	return v, true, m.assign(k, v, s, "")
}

func (m *machine) rbString(b, name string, args []any, block any, s *scope, at spot) (any, bool, error) {
	if o := opaqueAmong(args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	arg := func(i int) string { return rbShow(at2(args, i)) }
	var p *pattern
	if len(args) > 0 {
		p, _ = args[0].(*pattern)
	}
	space := " \t\r\n\f\v\x00"
	switch name {
	case "to_s", "to_str", "b", "scrub", "unicode_normalize", "force_encoding", "encode", "+@", "-@", "html_safe":
		return b, true, nil
	case "to_i":
		if len(args) > 0 {
			if base, ok := args[0].(integer); ok && base >= 2 && base <= 36 {
				t := strings.ToLower(strings.TrimSpace(b))
				if p := map[integer]string{2: "0b", 8: "0o", 16: "0x"}[base]; p != "" {
					t = strings.TrimPrefix(t, p)
				}
				end := 0 // the digits in front count
				for end < len(t) {
					if _, err := strconv.ParseInt(t[:end+1], int(base), 64); err != nil && !(end == 0 && (t[0] == '-' || t[0] == '+')) {
						break
					}
					end++
				}
				i, _ := strconv.ParseInt(t[:end], int(base), 64)
				return integer(i), true, nil
			}
			return nil, true, giveUp("a number with a base")
		}
		return rbToI(b), true, nil
	case "to_f": // of what it begins with
		t := strings.ReplaceAll(strings.TrimSpace(b), "_", "")
		for ; t != ""; t = t[:len(t)-1] {
			if f, err := strconv.ParseFloat(t, 64); err == nil && strings.Trim(t, "0123456789+-.eE") == "" {
				return f, true, nil
			}
		}
		return 0.0, true, nil
	case "to_sym", "intern":
		return symbol(b), true, nil
	case "length", "size":
		return integer(len([]rune(b))), true, nil
	case "bytesize":
		return integer(len(b)), true, nil
	case "empty?":
		return b == "", true, nil
	case "blank?":
		return strings.TrimSpace(b) == "", true, nil
	case "present?":
		return strings.TrimSpace(b) != "", true, nil
	case "presence":
		if strings.TrimSpace(b) == "" {
			return nil, true, nil
		}
		return b, true, nil
	case "strip", "squish":
		return strings.Trim(b, space), true, nil
	case "lstrip":
		return strings.TrimLeft(b, space), true, nil
	case "rstrip":
		return strings.TrimRight(b, space), true, nil
	case "chomp":
		if len(args) > 0 {
			return strings.TrimSuffix(b, arg(0)), true, nil
		}
		return strings.TrimSuffix(strings.TrimSuffix(b, "\n"), "\r"), true, nil
	case "chop":
		if b == "" {
			return b, true, nil
		}
		r := []rune(b)
		return string(r[:len(r)-1]), true, nil
	case "downcase":
		return strings.ToLower(b), true, nil
	case "upcase":
		return strings.ToUpper(b), true, nil
	case "swapcase":
		return strings.Map(func(r rune) rune {
			if up := []rune(strings.ToUpper(string(r))); len(up) == 1 && up[0] != r {
				return up[0]
			}
			return []rune(strings.ToLower(string(r)) + string(r))[0]
		}, b), true, nil
	case "capitalize":
		if b == "" {
			return b, true, nil
		}
		return strings.ToUpper(b[:1]) + strings.ToLower(b[1:]), true, nil
	case "reverse":
		r := []rune(b)
		slices.Reverse(r)
		return string(r), true, nil
	case "start_with?", "end_with?":
		for i, a := range args {
			if q, ok := a.(*pattern); ok {
				r, err := m.rbMatch(q, b)
				if err != nil {
					return nil, true, err
				}
				if o, ok := r.(*object); ok {
					if v, _ := o.get("begin"); v == any(integer(0)) {
						return true, true, nil
					}
				}
				continue
			}
			if name == "start_with?" && strings.HasPrefix(b, arg(i)) || name == "end_with?" && strings.HasSuffix(b, arg(i)) {
				return true, true, nil
			}
		}
		return false, true, nil
	case "include?":
		return strings.Contains(b, arg(0)), true, nil
	case "index":
		if p == nil {
			if i := strings.Index(b, arg(0)); i >= 0 {
				return integer(i), true, nil
			}
			return nil, true, nil
		}
	case "delete_prefix":
		return strings.TrimPrefix(b, arg(0)), true, nil
	case "delete_suffix":
		return strings.TrimSuffix(b, arg(0)), true, nil
	case "delete":
		if !strings.ContainsAny(arg(0), "-^\\") {
			return strings.Map(func(r rune) rune {
				if strings.ContainsRune(arg(0), r) {
					return -1
				}
				return r
			}, b), true, nil
		}
	case "tr":
		from, to := []rune(arg(0)), []rune(arg(1))
		if strings.ContainsAny(arg(0), "^\\") || strings.Contains(arg(0), "-") && len(from) > 1 || len(to) == 0 {
			return nil, true, giveUp("tr")
		}
		return strings.Map(func(r rune) rune {
			if i := slices.Index(from, r); i >= 0 {
				return to[min(i, len(to)-1)]
			}
			return r
		}, b), true, nil
	case "gsub", "sub":
		if p == nil {
			n := -1
			if name == "sub" {
				n = 1
			}
			to := strings.NewReplacer(`\0`, arg(0), `\&`, arg(0), `\\`, `\`).Replace(arg(1))
			if block != nil && len(args) == 1 {
				v, err := m.rbYield(block, []any{arg(0)}, at)
				if err != nil {
					return nil, true, err
				}
				to = rbShow(v)
			} else if h, ok := at2(args, 1).(*object); ok && h.dict {
				v, _ := h.get(arg(0))
				if to = ""; v != any(undefined) {
					to = rbShow(v)
				}
			}
			return strings.Replace(b, arg(0), to, n), true, nil
		}
		re, _, err := p.compiled()
		if err != nil {
			return nil, true, err
		}
		var failed error
		out := replaced(re, b, name == "gsub", func(groups []string) string {
			if block != nil && len(args) == 1 {
				m.rb().globals["$~"] = nil
				for i := 1; i < len(groups) && i < 10; i++ {
					m.rb().globals["$"+strconv.Itoa(i)] = groups[i]
				}
				v, err := m.rbYield(block, []any{groups[0]}, at)
				if err != nil {
					failed = err
				}
				return rbShow(v)
			}
			if h, ok := at2(args, 1).(*object); ok && h.dict {
				v, _ := h.get(groups[0])
				if v == any(undefined) {
					v = nil
				}
				return rbShow(v)
			}
			t := arg(1)
			for i := len(groups) - 1; i >= 0; i-- {
				t = strings.ReplaceAll(t, `\`+strconv.Itoa(i), groups[i])
			}
			return t
		})
		return out, true, failed
	case "match", "match?", "=~":
		if p == nil {
			return nil, true, giveUp("what a text matches")
		}
		if name == "match?" { // it leaves no trace
			re, _, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			return re.MatchString(b), true, nil
		}
		r, err := m.rbMatch(p, b)
		return r, true, err
	case "scan":
		if p == nil {
			return nil, true, giveUp("what a text matches")
		}
		re, _, err := p.compiled()
		if err != nil {
			return nil, true, err
		}
		if _, err := m.rbMatch(p, b); err != nil { // for $~
			return nil, true, err
		}
		l := &list{}
		for _, g := range re.FindAllStringSubmatch(b, 1000) {
			if len(g) == 1 {
				l.items = append(l.items, g[0])
				continue
			}
			x := &list{}
			for _, t := range g[1:] {
				x.items = append(x.items, t)
			}
			l.items = append(l.items, x)
		}
		return l, true, nil
	case "split":
		var parts []string
		limit := -1
		if n, ok := at2(args, 1).(integer); ok && n > 0 {
			limit = int(n)
		}
		switch {
		case len(args) == 0 || arg(0) == " " && p == nil:
			parts = strings.Fields(b)
			if limit > 0 && len(parts) > limit {
				return nil, true, giveUp("a text that is split")
			}
		case p != nil:
			re, _, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			parts = re.Split(b, limit)
		default:
			parts = strings.SplitN(b, arg(0), limit)
		}
		for limit < 0 && len(parts) > 0 && parts[len(parts)-1] == "" {
			parts = parts[:len(parts)-1]
		}
		l := &list{}
		for _, t := range parts {
			l.items = append(l.items, t)
		}
		return l, true, nil
	case "partition", "rpartition":
		if p == nil {
			i := strings.Index(b, arg(0))
			if name == "rpartition" {
				i = strings.LastIndex(b, arg(0))
			}
			switch {
			case i >= 0:
				return &list{items: []any{b[:i], arg(0), b[i+len(arg(0)):]}}, true, nil
			case name == "partition":
				return &list{items: []any{b, "", ""}}, true, nil
			}
			return &list{items: []any{"", "", b}}, true, nil
		}
	case "lines", "each_line":
		l := &list{}
		for t := range strings.SplitAfterSeq(b, "\n") {
			if t != "" {
				l.items = append(l.items, t)
			}
		}
		if name == "each_line" {
			return m.rbEach(l, block, b, at)
		}
		return l, true, nil
	case "chars", "each_char", "each_grapheme_cluster":
		l := &list{}
		for _, r := range b {
			l.items = append(l.items, string(r))
		}
		if block != nil {
			return m.rbEach(l, block, b, at)
		}
		return l, true, nil
	case "each_byte", "bytes":
		l := &list{}
		for i := range len(b) {
			l.items = append(l.items, integer(b[i]))
		}
		if block != nil {
			return m.rbEach(l, block, b, at)
		}
		return l, true, nil
	case "[]", "slice":
		r := []rune(b)
		switch k := first(args).(type) {
		case integer:
			if k < 0 {
				k += integer(len(r))
			}
			if k < 0 || int(k) > len(r) || int(k) == len(r) && len(args) == 1 {
				return nil, true, nil
			}
			n := 1
			if len(args) > 1 {
				f, _ := toNumber(args[1])
				n = int(f)
			}
			return string(r[k:max(int(k), min(len(r), int(k)+n))]), true, nil
		case string:
			if strings.Contains(b, k) {
				return k, true, nil
			}
			return nil, true, nil
		case *rbRange:
			from, to, ok := k.ends(len(r))
			if !ok {
				return nil, true, nil
			}
			return string(r[from:to]), true, nil
		case *pattern:
			x, err := m.rbMatch(k, b)
			if err != nil || x == nil {
				return nil, true, err
			}
			key := any(integer(0))
			if len(args) > 1 {
				key = args[1]
			}
			g, _ := x.(*object).get(rbKey(key))
			if g == any(undefined) {
				g = nil
			}
			return g, true, nil
		}
	case "+":
		return b + arg(0), true, nil
	case "*":
		v, err := m.rbOperate("*", b, first(args), s, at)
		return v, true, err
	case "concat", "<<", "prepend", "replace", "insert":
		return nil, true, giveUp("a text that is changed")
	case "ljust", "rjust", "center":
		n, ok := first(args).(integer)
		fill := " "
		if len(args) > 1 {
			fill = arg(1)
		}
		if !ok || fill == "" || n > 1000 || name == "center" {
			return nil, true, giveUp("a text that is filled up")
		}
		pad := ""
		if d := int(n) - len(b); d > 0 {
			pad = strings.Repeat(fill, d/len(fill)+1)[:d]
		}
		if name == "ljust" {
			return b + pad, true, nil
		}
		return pad + b, true, nil
	case "between?":
		return b >= arg(0) && b <= arg(1), true, nil
	case "hex":
		i, _ := strconv.ParseInt(strings.TrimPrefix(b, "0x"), 16, 64)
		return integer(i), true, nil
	case "ord":
		for _, r := range b {
			return integer(r), true, nil
		}
	case "count":
		if len(arg(0)) == 1 {
			return integer(strings.Count(b, arg(0))), true, nil
		}
	case "casecmp?":
		return strings.EqualFold(b, arg(0)), true, nil
	case "casecmp":
		return integer(strings.Compare(strings.ToLower(b), strings.ToLower(arg(0)))), true, nil
	case "sum", "crypt", "unpack", "unpack1":
		return nil, true, giveUp("the method %s of a text", name)
	case "%":
		v, err := m.rbOperate("%", b, first(args), s, at)
		return v, true, err
	case "encoding", "valid_encoding?", "ascii_only?":
		return dontKnow(name), true, nil
	case "constantize", "safe_constantize":
		if v, ok := m.rb().consts.get(b); ok {
			return v, true, nil
		}
		return nil, true, giveUp("a class that is named while the program runs")
	case "underscore":
		return nil, true, giveUp("underscore")
	case "read", "rewind":
		return b, true, nil
	}
	if strings.HasSuffix(name, "!") {
		return m.rbBang(b, name, args, block, s, at)
	}
	return nil, false, nil
}

// ends are the places of a range in something of a size; ok is false where it
// begins behind it.
func (r *rbRange) ends(size int) (from, to int, ok bool) {
	place := func(v any, def int) int {
		i, isInt := v.(integer)
		if !isInt {
			return def
		}
		if i < 0 {
			i += integer(size)
		}
		return int(i)
	}
	from, to = place(r.from, 0), place(r.to, size-1)
	if r.less && r.to != nil {
		to--
	}
	if from < 0 || from > size {
		return 0, 0, false
	}
	to = min(to+1, size)
	return from, max(from, to), true
}

func (m *machine) rbNumber(x any, name string, args []any, block any, s *scope, at spot) (any, bool, error) {
	f, _ := toNumber(x)
	i, whole := x.(integer)
	switch name {
	case "to_s", "inspect":
		if base, ok := first(args).(integer); ok && whole && base >= 2 && base <= 36 {
			return strconv.FormatInt(int64(i), int(base)), true, nil
		}
		return rbShow(x), true, nil
	case "to_i", "to_int", "floor", "truncate":
		if len(args) == 0 {
			if name == "floor" {
				f = math.Floor(f)
			}
			return integer(math.Trunc(f)), true, nil
		}
	case "ceil":
		return integer(math.Ceil(f)), true, nil
	case "round":
		if len(args) == 0 {
			return integer(math.Round(f)), true, nil
		}
	case "to_f":
		return f, true, nil
	case "abs":
		if whole {
			return max(i, -i), true, nil
		}
		return math.Abs(f), true, nil
	case "zero?":
		return f == 0, true, nil
	case "positive?":
		return f > 0, true, nil
	case "negative?":
		return f < 0, true, nil
	case "nonzero?":
		if f == 0 {
			return nil, true, nil
		}
		return x, true, nil
	case "even?", "odd?":
		return (i%2 == 0) == (name == "even?"), true, nil
	case "succ", "next":
		return i + 1, true, nil
	case "pred":
		return i - 1, true, nil
	case "between?", "clamp":
		if len(args) == 2 && opaqueAmong(args) == nil {
			lo, _ := toNumber(args[0])
			hi, _ := toNumber(args[1])
			if name == "between?" {
				return f >= lo && f <= hi, true, nil
			}
			switch {
			case f < lo:
				return args[0], true, nil
			case f > hi:
				return args[1], true, nil
			}
			return x, true, nil
		}
		if r, ok := first(args).(*rbRange); ok && name == "clamp" {
			if r.from != nil && !r.has(x) {
				if lo, _ := toNumber(r.from); f < lo {
					return r.from, true, nil
				}
				return r.to, true, nil
			}
			return x, true, nil
		}
	case "times":
		if !whole || i > maxItems {
			return nil, true, spent("a loop that is too long")
		}
		l := &list{}
		for k := range i {
			l.items = append(l.items, k)
		}
		if block == nil {
			return l, true, nil
		}
		return m.rbEach(l, block, x, at)
	case "upto", "downto":
		to, ok := first(args).(integer)
		if !ok || !whole || to-i > maxItems || i-to > maxItems {
			return nil, true, spent("a loop that is too long")
		}
		l := &list{}
		for k := i; name == "upto" && k <= to || name == "downto" && k >= to; {
			l.items = append(l.items, k)
			if name == "upto" {
				k++
			} else {
				k--
			}
		}
		if block == nil {
			return l, true, nil
		}
		return m.rbEach(l, block, x, at)
	case "digits", "bit_length":
		return nil, true, giveUp("the method %s of a number", name)
	case "integer?":
		return whole, true, nil
	case "chr":
		return string(rune(i)), true, nil
	case "blank?":
		return false, true, nil
	case "present?":
		return true, true, nil
	case "presence", "seconds", "minutes":
		return x, true, nil
	case "fdiv":
		y, ok := toNumber(first(args))
		if ok {
			return f / y, true, nil
		}
	case "+", "-", "*", "/", "%", "**", "<", ">", "<=", ">=", "<=>", "&", "|", "^", ">>", "<<", "modulo", "div", "pow":
		if name == "pow" && len(args) > 1 {
			return dontKnow("a power by a modulus"), true, nil
		}
		if as := map[string]string{"modulo": "%", "div": "/", "pow": "**"}[name]; as != "" {
			name = as
		}
		v, err := m.rbOperate(name, x, first(args), s, at)
		return v, true, err
	case "divmod":
		if y, ok := first(args).(integer); ok && whole && y != 0 {
			q, err := pyOperate("//", i, y)
			r, err2 := pyOperate("%", i, y)
			if err == nil && err2 == nil {
				return &list{items: []any{q, r}}, true, nil
			}
		}
	}
	return nil, false, nil
}

func (m *machine) rbList(b *list, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	if o := clouded(b, name, args); o != nil && block == nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	each := func(i int) (any, error) {
		if block == nil {
			return nil, giveUp("the method %s without a block", name)
		}
		return m.rbYield(block, []any{b.items[i]}, at)
	}
	yes := func(i int) (bool, error) {
		if block == nil && len(args) > 0 { // any?(pattern)
			takes, ok, err := m.rbCase(args[0], b.items[i], s, at)
			if err == nil && !ok {
				err = undecided("whether something fits")
			}
			return takes, err
		}
		v := b.items[i]
		if block != nil {
			var err error
			if v, err = each(i); err != nil {
				return false, err
			}
		}
		return m.decide(v, s, at.n)
	}
	count := func(def int) int {
		if n, ok := first(args).(integer); ok {
			return max(0, int(n))
		}
		return def
	}
	same := func(x, y any) bool { same, _ := rbEqual(x, y); return same }
	if bang, ok := strings.CutSuffix(name, "!"); ok {
		switch bang {
		case "map", "collect", "select", "filter", "reject", "compact", "uniq", "sort", "sort_by", "reverse", "flatten", "shuffle":
			v, done, err := m.rbList(b, bang, args, kw, block, s, at)
			if l, isList := v.(*list); isList && err == nil {
				b.items = l.items
				return b, true, nil
			}
			return v, done, err
		}
	}
	switch name {
	case "each", "each_entry":
		return m.rbEach(b, block, b, at)
	case "to_a", "entries", "to_ary", "lazy", "force", "eager":
		return b, true, nil
	case "to_h":
		o := newObject()
		o.dict = true
		for i, x := range b.items {
			if block != nil {
				var err error
				if x, err = each(i); err != nil {
					return nil, true, err
				}
			}
			p, ok := x.(*list)
			if !ok || len(p.items) != 2 || !known(p.items[0]) {
				return nil, true, undecided("a hash of what is not known")
			}
			o.set(rbKey(p.items[0]), p.items[1])
		}
		return o, true, nil
	case "length", "size":
		return integer(len(b.items)), true, nil
	case "count":
		if block == nil && len(args) == 0 {
			return integer(len(b.items)), true, nil
		}
		n := 0
		for i := range b.items {
			ok, err := yes(i)
			if err != nil {
				return nil, true, err
			}
			if ok {
				n++
			}
		}
		return integer(n), true, nil
	case "empty?", "none?":
		if name == "empty?" || block == nil && len(args) == 0 && len(b.items) == 0 {
			return len(b.items) == 0, true, nil
		}
	case "blank?":
		return len(b.items) == 0, true, nil
	case "present?":
		return len(b.items) > 0, true, nil
	case "presence":
		if len(b.items) == 0 {
			return nil, true, nil
		}
		return b, true, nil
	case "push", "append", "<<", "add":
		if name == "add" && !b.unique {
			return nil, false, nil
		}
		if len(b.items)+len(args) > maxItems {
			return nil, true, spent("a list that is too long")
		}
		for _, a := range args {
			if b.unique && slices.ContainsFunc(b.items, func(y any) bool { same, _ := rbEqual(a, y); return same }) {
				continue
			}
			b.items = append(b.items, a)
		}
		return b, true, nil
	case "concat":
		for _, a := range args {
			items, err := m.rbItems(a)
			if err != nil {
				return nil, true, err
			}
			b.items = append(b.items, items...)
		}
		return b, true, nil
	case "unshift", "prepend":
		b.items = append(slices.Clone(args), b.items...)
		return b, true, nil
	case "pop", "shift":
		if len(args) > 0 {
			n := min(count(0), len(b.items))
			l := &list{items: slices.Clone(b.items[:n])}
			if name == "pop" {
				l = &list{items: slices.Clone(b.items[len(b.items)-n:])}
				b.items = b.items[:len(b.items)-n]
			} else {
				b.items = slices.Clone(b.items[n:])
			}
			return l, true, nil
		}
		if len(b.items) == 0 {
			return nil, true, nil
		}
		if name == "pop" {
			v := b.items[len(b.items)-1]
			b.items = b.items[:len(b.items)-1]
			return v, true, nil
		}
		v := b.items[0]
		b.items = slices.Clone(b.items[1:])
		return v, true, nil
	case "first", "take":
		if len(args) == 0 {
			return rbAt(b.items, 0), true, nil
		}
		return &list{items: slices.Clone(b.items[:min(count(0), len(b.items))])}, true, nil
	case "last":
		if len(args) == 0 {
			return rbAt(b.items, -1), true, nil
		}
		return &list{items: slices.Clone(b.items[max(0, len(b.items)-count(0)):])}, true, nil
	case "drop":
		return &list{items: slices.Clone(b.items[min(count(0), len(b.items)):])}, true, nil
	case "at", "dig":
		if i, ok := first(args).(integer); ok {
			v := rbAt(b.items, int(i))
			if len(args) > 1 && v != nil {
				w, err := m.rbSend(v, "dig", args[1:], nil, nil, s, at)
				return w, true, err
			}
			return v, true, nil
		}
	case "fetch":
		if i, ok := first(args).(integer); ok {
			if int(i) < len(b.items) && int(i) >= -len(b.items) {
				return rbAt(b.items, int(i)), true, nil
			}
			if block != nil {
				v, err := m.rbYield(block, []any{i}, at)
				return v, true, err
			}
			if len(args) > 1 {
				return args[1], true, nil
			}
			return nil, true, raise("IndexError", "index outside of array bounds")
		}
	case "[]", "slice":
		switch k := first(args).(type) {
		case integer:
			if len(args) == 1 {
				return rbAt(b.items, int(k)), true, nil
			}
			n, _ := toNumber(args[1])
			if k < 0 {
				k += integer(len(b.items))
			}
			if k < 0 || int(k) > len(b.items) {
				return nil, true, nil
			}
			return &list{items: slices.Clone(b.items[k:min(len(b.items), int(k)+max(0, int(n)))])}, true, nil
		case *rbRange:
			from, to, ok := k.ends(len(b.items))
			if !ok {
				return nil, true, nil
			}
			return &list{items: slices.Clone(b.items[from:to])}, true, nil
		}
	case "values_at":
		l := &list{}
		for _, a := range args {
			i, ok := a.(integer)
			if !ok {
				return nil, true, undecided("elements that are not known")
			}
			l.items = append(l.items, rbAt(b.items, int(i)))
		}
		return l, true, nil
	case "include?", "member?":
		for _, x := range b.items {
			is, ok := rbEqual(x, first(args))
			if !ok {
				return dontKnow("whether a list holds something"), true, nil
			}
			if is {
				return true, true, nil
			}
		}
		return false, true, nil
	case "index", "find_index":
		for i, x := range b.items {
			is := false
			if block != nil {
				var err error
				if is, err = yes(i); err != nil {
					return nil, true, err
				}
			} else {
				is = same(x, first(args))
			}
			if is {
				return integer(i), true, nil
			}
		}
		return nil, true, nil
	case "delete":
		found := any(nil)
		b.items = slices.DeleteFunc(slices.Clone(b.items), func(x any) bool {
			if same(x, first(args)) {
				found = x
				return true
			}
			return false
		})
		return found, true, nil
	case "delete_at":
		if i, ok := first(args).(integer); ok && i >= 0 && int(i) < len(b.items) {
			v := b.items[i]
			b.items = slices.Delete(slices.Clone(b.items), int(i), int(i)+1)
			return v, true, nil
		}
		return nil, true, nil
	case "delete_if", "keep_if":
		l := &list{}
		for i, x := range b.items {
			ok, err := yes(i)
			if err != nil {
				return nil, true, err
			}
			if ok == (name == "keep_if") {
				l.items = append(l.items, x)
			}
		}
		b.items = l.items
		return b, true, nil
	case "join":
		sep := ""
		if len(args) > 0 {
			sep = rbShow(args[0])
		}
		v, err := m.rbJoin(b.items, sep, at)
		return v, true, err
	case "map", "collect", "flat_map", "filter_map", "each_with_index", "each_index", "map_with_index":
		l := &list{}
		for i := 0; i < len(b.items); i++ {
			var v any
			var err error
			switch name {
			case "each_with_index":
				if block == nil {
					l.items = append(l.items, &list{items: []any{b.items[i], integer(i)}})
					continue
				}
				v, err = m.rbYield(block, []any{b.items[i], integer(i)}, at)
			case "each_index":
				v, err = m.rbYield(block, []any{integer(i)}, at)
			default:
				if block == nil {
					return b, true, nil
				}
				v, err = each(i)
			}
			if err != nil {
				return nil, true, err
			}
			switch {
			case name == "flat_map":
				if x, ok := v.(*list); ok {
					l.items = append(l.items, x.items...)
					continue
				}
			case name == "filter_map":
				keep, ok := s.truth(v)
				if !ok {
					return nil, true, undecided("whether something is kept")
				}
				if !keep {
					continue
				}
			}
			l.items = append(l.items, v)
		}
		if block != nil && (name == "each_with_index" || name == "each_index") {
			return b, true, nil
		}
		return l, true, nil
	case "with_index", "each_with_object", "with_object":
		if block == nil {
			return nil, true, giveUp("the method %s without a block", name)
		}
		l := &list{}
		for i := range b.items {
			with := any(integer(i))
			if name != "with_index" {
				with = first(args)
			} else if from, ok := first(args).(integer); ok {
				with = integer(i) + from
			}
			v, err := m.rbYield(block, []any{b.items[i], with}, at)
			if err != nil {
				return nil, true, err
			}
			l.items = append(l.items, v)
		}
		if name != "with_index" {
			return first(args), true, nil
		}
		return l, true, nil
	case "select", "filter", "reject", "find", "detect", "any?", "all?", "take_while", "drop_while", "partition", "find_all", "one?":
		l, other := &list{}, &list{}
		hits := 0
		for i := range b.items {
			ok, err := yes(i)
			if err != nil {
				return nil, true, err
			}
			switch name {
			case "find", "detect":
				if ok {
					return b.items[i], true, nil
				}
			case "any?":
				if ok {
					return true, true, nil
				}
			case "all?":
				if !ok {
					return false, true, nil
				}
			case "take_while":
				if !ok {
					return l, true, nil
				}
			case "drop_while":
				if !ok {
					return &list{items: slices.Clone(b.items[i:])}, true, nil
				}
				continue
			}
			if ok {
				hits++
			}
			if ok != (name == "reject") {
				l.items = append(l.items, b.items[i])
			} else {
				other.items = append(other.items, b.items[i])
			}
		}
		switch name {
		case "find", "detect":
			return nil, true, nil
		case "any?", "all?":
			return name == "all?", true, nil
		case "one?":
			return hits == 1, true, nil
		case "partition":
			return &list{items: []any{l, other}}, true, nil
		case "drop_while":
			return &list{}, true, nil
		}
		return l, true, nil
	case "compact":
		l := &list{}
		for _, x := range b.items {
			if x != nil {
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "compact_blank":
		l := &list{}
		for _, x := range b.items {
			if yes, ok := s.truth(x); ok && yes && x != "" {
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "flatten":
		l := &list{}
		var add func(x *list, depth int)
		add = func(x *list, depth int) {
			if m.use(16*len(x.items)) != nil {
				return // the next step gives up
			}
			for _, v := range x.items {
				if y, ok := v.(*list); ok && depth < 10 {
					add(y, depth+1)
				} else {
					l.items = append(l.items, v)
				}
			}
		}
		add(b, 0)
		return l, true, nil
	case "uniq":
		l := &list{}
		for _, x := range b.items {
			if !slices.ContainsFunc(l.items, func(y any) bool { return same(x, y) }) {
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "reverse", "reverse_each":
		l := &list{items: slices.Clone(b.items)}
		slices.Reverse(l.items)
		if name == "reverse_each" {
			return m.rbEach(l, block, b, at)
		}
		return l, true, nil
	case "sort", "sort_by", "max", "min", "max_by", "min_by", "minmax":
		if opaqueAmong(b.items) != nil {
			return nil, true, giveUp("a list that is sorted")
		}
		keys := b.items
		if strings.HasSuffix(name, "_by") {
			l := &list{}
			for i := range b.items {
				v, err := each(i)
				if err != nil {
					return nil, true, err
				}
				l.items = append(l.items, v)
			}
			keys = l.items
		}
		order := make([]int, len(b.items))
		for i := range order {
			order[i] = i
		}
		var failed error
		slices.SortStableFunc(order, func(i, j int) int {
			var v any
			var err error
			if block != nil && !strings.HasSuffix(name, "_by") {
				v, err = m.rbYield(block, []any{keys[i], keys[j]}, at)
			} else {
				v, err = m.rbCompare(keys[i], keys[j], s, at)
			}
			if err != nil {
				failed = err
				return 0
			}
			f, ok := toNumber(v)
			if !ok || v == nil {
				failed = giveUp("a list that is sorted")
			}
			return compare(f, 0)
		})
		if failed != nil {
			return nil, true, failed
		}
		l := &list{}
		for _, i := range order {
			l.items = append(l.items, b.items[i])
		}
		switch name {
		case "max", "max_by":
			return rbAt(l.items, -1), true, nil
		case "min", "min_by":
			return rbAt(l.items, 0), true, nil
		case "minmax":
			return &list{items: []any{rbAt(l.items, 0), rbAt(l.items, -1)}}, true, nil
		}
		return l, true, nil
	case "sum", "reduce", "inject":
		items := b.items
		acc := any(integer(0))
		sign := "+"
		start := 0
		switch {
		case name == "sum":
			if len(args) > 0 {
				acc = args[0]
			}
		case len(args) == 2:
			acc, sign = args[0], rbShow(args[1])
		case len(args) == 1 && block == nil:
			sign = rbShow(args[0])
			fallthrough
		case len(args) == 0:
			if len(items) == 0 {
				return nil, true, nil
			}
			acc, start = items[0], 1
		default:
			acc = args[0]
		}
		for i := start; i < len(items); i++ {
			x := items[i]
			var err error
			switch {
			case block != nil && name == "sum":
				if x, err = each(i); err == nil {
					acc, err = m.rbOperate("+", acc, x, s, at)
				}
			case block != nil:
				acc, err = m.rbYield(block, []any{acc, x}, at)
			default:
				acc, err = m.rbSend(acc, sign, []any{x}, nil, nil, s, at)
			}
			if err != nil {
				return nil, true, err
			}
		}
		return acc, true, nil
	case "zip":
		l := &list{}
		for i, x := range b.items {
			row := &list{items: []any{x}}
			for _, a := range args {
				items, err := m.rbItems(a)
				if err != nil {
					return nil, true, err
				}
				row.items = append(row.items, rbAt(items, i))
			}
			l.items = append(l.items, row)
		}
		return l, true, nil
	case "each_slice", "each_cons":
		n := count(0)
		if n < 1 {
			return nil, true, raise("ArgumentError", "invalid slice size")
		}
		l := &list{}
		for i := 0; i < len(b.items); {
			if name == "each_cons" && i+n > len(b.items) {
				break
			}
			l.items = append(l.items, &list{items: slices.Clone(b.items[i:min(len(b.items), i+n)])})
			if name == "each_cons" {
				i++
			} else {
				i += n
			}
		}
		return m.rbEach(l, block, b, at)
	case "group_by", "tally":
		o := newObject()
		o.dict = true
		for i, x := range b.items {
			k := x
			if name == "group_by" {
				var err error
				if k, err = each(i); err != nil {
					return nil, true, err
				}
			}
			if !known(k) {
				return nil, true, undecided("a group that is not known")
			}
			key := rbKey(k)
			if name == "tally" {
				n, _ := o.get(key)
				c, _ := n.(integer)
				o.set(key, c+1)
				continue
			}
			l, ok := o.get(key)
			if !ok {
				l = &list{}
				o.set(key, l)
			}
			l.(*list).items = append(l.(*list).items, x)
		}
		return o, true, nil
	case "assoc":
		for _, x := range b.items {
			if l, ok := x.(*list); ok && len(l.items) > 0 && same(l.items[0], first(args)) {
				return l, true, nil
			}
		}
		return nil, true, nil
	case "rotate":
		n := count(1)
		if len(b.items) == 0 {
			return b, true, nil
		}
		n %= len(b.items)
		return &list{items: append(slices.Clone(b.items[n:]), b.items[:n]...)}, true, nil
	case "cycle", "sample", "shuffle", "pack", "product", "combination", "permutation":
		return nil, true, giveUp("the method %s of a list", name)
	case "[]=":
		i, ok := first(args).(integer)
		if i < 0 {
			i += integer(len(b.items))
		}
		if !ok || len(args) != 2 || i < 0 || i > maxItems {
			return nil, true, giveUp("elements of a list")
		}
		for int(i) >= len(b.items) {
			b.items = append(b.items, nil)
		}
		b.items[i] = args[1]
		return args[1], true, nil
	case "clear":
		b.items = nil
		return b, true, nil
	case "+", "-", "|", "&", "*":
		v, err := m.rbOperate(name, b, first(args), s, at)
		return v, true, err
	case "to_set":
		return b, true, nil
	case "to_s", "inspect":
		if t, ok := rbInspect(b, 0); ok {
			return t, true, nil
		}
		return dontKnow("a list as text"), true, nil
	case "next", "peek":
		if len(b.items) == 0 {
			return nil, true, raise("StopIteration", "iteration reached an end")
		}
		v := b.items[0]
		if name == "next" {
			b.items = b.items[1:]
		}
		return v, true, nil
	}
	if name == "none?" {
		for i := range b.items {
			ok, err := yes(i)
			if err != nil {
				return nil, true, err
			}
			if ok {
				return false, true, nil
			}
		}
		return true, true, nil
	}
	return nil, false, nil
}

func (m *machine) rbCompare(a, b any, s *scope, at spot) (any, error) {
	if x, ok := a.(*list); ok {
		if y, ok := b.(*list); ok {
			for i := range x.items {
				if i >= len(y.items) {
					return integer(1), nil
				}
				v, err := m.rbCompare(x.items[i], y.items[i], s, at)
				if err != nil || v != any(integer(0)) {
					return v, err
				}
			}
			return integer(compare(float64(len(x.items)), float64(len(y.items)))), nil
		}
	}
	if x, ok := a.(symbol); ok {
		if y, ok := b.(symbol); ok {
			return integer(strings.Compare(string(x), string(y))), nil
		}
	}
	return m.rbOperate("<=>", a, b, s, at)
}

func rbAt(items []any, i int) any {
	if i < 0 {
		i += len(items)
	}
	if i < 0 || i >= len(items) {
		return nil
	}
	return items[i]
}

// rbEnv are the methods of ENV.
func (m *machine) rbEnv(name string, args []any, block any, s *scope, at spot) (any, bool, error) {
	switch name {
	case "[]", "fetch", "key?", "has_key?", "include?", "member?", "[]=", "store", "delete":
		if !known(first(args)) {
			return nil, true, undecided("a variable whose name is not known")
		}
		if _, isText := first(args).(string); !isText {
			return nil, true, raise("TypeError", "no implicit conversion into String")
		}
	}
	key := rbShow(first(args))
	switch name {
	case "[]":
		if v, ok := m.lookup(key, at); ok {
			return v, true, nil
		}
		return nil, true, nil
	case "fetch":
		if v, ok := m.lookup(key, at); ok {
			return v, true, nil
		}
		if block != nil {
			v, err := m.rbYield(block, []any{key}, at)
			return v, true, err
		}
		if len(args) > 1 {
			return args[1], true, nil
		}
		return nil, true, raise("KeyError", "key not found: "+key)
	case "key?", "has_key?", "include?", "member?":
		_, ok := m.lookup(key, at)
		return ok, true, nil
	case "[]=", "store":
		v := at2(args, 1)
		if v == nil {
			m.env.drop(key)
			return nil, true, nil
		}
		t, ok := v.(string)
		if !ok {
			if !known(v) {
				return nil, true, giveUp("what a variable is set to")
			}
			return nil, true, raise("TypeError", "no implicit conversion into String")
		}
		m.env.put(key, t)
		return v, true, nil
	case "delete":
		m.vague(key)
		v, ok := m.env.get(key)
		m.env.drop(key)
		if !ok {
			return nil, true, nil
		}
		return v, true, nil
	case "values_at":
		l := &list{}
		for _, a := range args {
			if v, ok := m.lookup(rbShow(a), at); ok {
				l.items = append(l.items, v)
			} else {
				l.items = append(l.items, nil)
			}
		}
		return l, true, nil
	case "update", "merge!":
		if o, ok := first(args).(*object); ok {
			for _, k := range o.keys {
				if t, ok := o.cells[k].v.(string); ok {
					m.env.put(k, t)
				}
			}
		}
		return &envMap{}, true, nil
	case "slice":
		o := newObject()
		o.dict = true
		for _, a := range args {
			if v, ok := m.lookup(rbShow(a), at); ok {
				o.set(rbShow(a), v)
			}
		}
		return o, true, nil
	}
	return m.rbHash(m.envObject(true), name, args, nil, block, s, at)
}

func (m *machine) rbHash(o *object, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	if kw != nil {
		args = append(slices.Clone(args), kw)
	}
	newHash := func() *object {
		h := newObject()
		h.dict = true
		h.holds = o.holds
		return h
	}
	pair := func(k string) []any { return []any{rbUnkey(k), o.cells[k].v} }
	yes := func(k string) (bool, error) {
		v, err := m.rbYield(block, pair(k), at)
		if err != nil {
			return false, err
		}
		return m.decide(v, s, at.n)
	}
	switch name {
	case "[]", "fetch", "key?", "has_key?", "include?", "member?", "[]=", "store", "delete", "dig":
		if unclear(args[:min(1, len(args))], 3) != nil {
			if name == "fetch" || name == "[]" || name == "dig" {
				return dontKnow("an element chosen by what is not known"), true, nil
			}
			return nil, true, undecided("an element that is not known")
		}
	}
	key := ""
	if len(args) > 0 {
		key = rbKey(args[0])
	}
	if bang, ok := strings.CutSuffix(name, "!"); ok {
		switch bang {
		case "transform_values", "transform_keys", "select", "filter", "reject", "compact", "merge", "deep_merge", "symbolize_keys", "deep_symbolize_keys":
			v, done, err := m.rbHash(o, bang, args, nil, block, s, at)
			if h, isHash := v.(*object); isHash && err == nil {
				o.keys, o.cells = h.keys, h.cells
				return o, true, nil
			}
			return v, done, err
		}
	}
	switch name {
	case "[]", "fetch":
		if v, ok := o.get(key); ok {
			return v, true, nil
		}
		if name == "fetch" {
			if block != nil {
				v, err := m.rbYield(block, []any{first(args)}, at)
				return v, true, err
			}
			if len(args) > 1 {
				return args[1], true, nil
			}
			said, err := m.rbSend(first(args), "inspect", nil, nil, nil, s, at)
			if err != nil || !known(said) {
				said = rbShow(first(args))
			}
			return nil, true, raise("KeyError", "key not found: "+rbShow(said))
		}
		return m.rbDefault(o, first(args), at)
	case "dig":
		v, ok := o.get(key)
		if !ok || v == nil {
			return nil, true, nil
		}
		if len(args) > 1 {
			w, err := m.rbSend(v, "dig", args[1:], nil, nil, s, at)
			return w, true, err
		}
		return v, true, nil
	case "[]=", "store":
		o.set(key, at2(args, 1))
		return at2(args, 1), true, nil
	case "key?", "has_key?", "include?", "member?":
		_, ok := o.get(key)
		return ok, true, nil
	case "value?", "has_value?":
		for _, k := range o.keys {
			if same, _ := rbEqual(o.cells[k].v, first(args)); same {
				return true, true, nil
			}
		}
		return false, true, nil
	case "key":
		for _, k := range o.keys {
			if same, _ := rbEqual(o.cells[k].v, first(args)); same {
				return rbUnkey(k), true, nil
			}
		}
		return nil, true, nil
	case "delete":
		v, ok := o.get(key)
		o.remove(key)
		if !ok {
			return nil, true, nil
		}
		return v, true, nil
	case "keys":
		l := &list{}
		for _, k := range o.keys {
			l.items = append(l.items, rbUnkey(k))
		}
		return l, true, nil
	case "values":
		return o.view("values"), true, nil
	case "values_at", "fetch_values":
		l := &list{}
		for _, a := range args {
			v, ok := o.get(rbKey(a))
			if !ok {
				if name == "fetch_values" {
					return nil, true, raise("KeyError", "key not found")
				}
				v = nil
			}
			l.items = append(l.items, v)
		}
		return l, true, nil
	case "length", "size":
		return integer(len(o.keys)), true, nil
	case "empty?", "blank?":
		return len(o.keys) == 0, true, nil
	case "any?", "present?":
		if block == nil {
			return len(o.keys) > 0, true, nil
		}
	case "to_h":
		if block == nil {
			return o, true, nil
		}
	case "merge", "update", "merge!", "deep_merge", "reverse_merge", "with_defaults":
		if err := m.deeper(); err != nil {
			return nil, true, err
		}
		defer m.higher()
		h := o
		if name != "update" && name != "merge!" {
			h = newHash()
			if err := rbMerge(m, h, o); err != nil {
				return nil, true, err
			}
		}
		for _, a := range args {
			d, ok := a.(*object)
			if _, isEnv := a.(*envMap); isEnv {
				d, ok = m.envObject(true), true
			}
			if !ok || !d.dict {
				if a == nil {
					return nil, true, raise("TypeError", "no implicit conversion of nil into Hash")
				}
				return nil, true, giveUp("what a hash is merged with")
			}
			for _, k := range d.keys {
				v := d.cells[k].v
				old, there := h.get(k)
				switch {
				case there && (name == "reverse_merge" || name == "with_defaults"):
					continue
				case there && block != nil:
					var err error
					if v, err = m.rbYield(block, []any{rbUnkey(k), old, v}, at); err != nil {
						return nil, true, err
					}
				case there && name == "deep_merge":
					x, ok1 := old.(*object)
					y, ok2 := v.(*object)
					if ok1 && ok2 && x.dict && y.dict {
						var err error
						if v, _, err = m.rbHash(x, name, []any{y}, nil, nil, s, at); err != nil {
							return nil, true, err
						}
					}
				}
				h.set(k, v)
			}
		}
		return h, true, nil
	case "each", "each_pair":
		for _, k := range slices.Clone(o.keys) {
			if block == nil {
				break
			}
			if o.cells[k] == nil {
				continue
			}
			if _, err := m.rbYield(block, []any{&list{items: pair(k)}}, at); err != nil {
				return nil, true, err
			}
		}
		if block != nil {
			return o, true, nil
		}
	case "each_key", "each_value":
		for _, k := range slices.Clone(o.keys) {
			v := rbUnkey(k)
			if name == "each_value" {
				v = o.cells[k].v
			}
			if _, err := m.rbYield(block, []any{v}, at); err != nil {
				return nil, true, err
			}
		}
		return o, true, nil
	case "select", "filter", "reject", "keep_if", "delete_if":
		h := newHash()
		for _, k := range o.keys {
			ok, err := yes(k)
			if err != nil {
				return nil, true, err
			}
			if ok != (name == "reject" || name == "delete_if") {
				h.set(k, o.cells[k].v)
			}
		}
		if name == "keep_if" || name == "delete_if" {
			o.keys, o.cells = h.keys, h.cells
			return o, true, nil
		}
		return h, true, nil
	case "slice", "except", "extract!":
		h := newHash()
		for _, k := range o.keys {
			in := slices.ContainsFunc(args, func(a any) bool { return rbKey(a) == k })
			if in == (name != "except") {
				h.set(k, o.cells[k].v)
			}
		}
		return h, true, nil
	case "compact", "compact_blank":
		h := newHash()
		for _, k := range o.keys {
			if v := o.cells[k].v; v != nil && !(name == "compact_blank" && v == "") {
				h.set(k, v)
			}
		}
		return h, true, nil
	case "transform_values":
		h := newHash()
		for _, k := range o.keys {
			v, err := m.rbYield(block, []any{o.cells[k].v}, at)
			if err != nil {
				return nil, true, err
			}
			h.set(k, v)
		}
		return h, true, nil
	case "transform_keys", "symbolize_keys", "deep_symbolize_keys", "stringify_keys", "deep_stringify_keys", "with_indifferent_access":
		h := newHash()
		for _, k := range o.keys {
			v := o.cells[k].v
			to := rbUnkey(k)
			switch {
			case name == "with_indifferent_access":
				return nil, true, giveUp("keys that are texts and symbols")
			case name == "transform_keys" && block != nil:
				var err error
				if to, err = m.rbYield(block, []any{to}, at); err != nil {
					return nil, true, err
				}
			case name == "transform_keys":
				if d, ok := first(args).(*object); ok {
					if x, ok := d.get(k); ok {
						to = x
					}
				}
			case strings.HasSuffix(name, "symbolize_keys"):
				to = symbol(rbShow(to))
			default:
				to = rbShow(to)
			}
			if d, ok := v.(*object); ok && d.dict && strings.HasPrefix(name, "deep_") {
				var err error
				if v, _, err = m.rbHash(d, name, nil, nil, nil, s, at); err != nil {
					return nil, true, err
				}
			}
			h.set(rbKey(to), v)
		}
		return h, true, nil
	case "invert":
		h := newHash()
		for _, k := range o.keys {
			h.set(rbKey(o.cells[k].v), rbUnkey(k))
		}
		return h, true, nil
	case "default=":
		o.set("\x03default", first(args))
		return first(args), true, nil
	case "clear":
		o.keys, o.cells = nil, map[string]*cell{}
		return o, true, nil
	case "find", "detect", "map", "collect", "flat_map", "filter_map", "sort_by", "min_by", "max_by", "sum", "reduce", "inject", "each_with_index", "each_with_object", "partition", "group_by", "to_a", "sort", "first", "count", "all?", "none?", "find_all", "zip", "each_slice", "entries", "take_while":
	default:
		return nil, false, nil
	}
	items, err := m.rbItems(o)
	if err != nil {
		return nil, true, err
	}
	if name == "to_h" {
		return m.rbList(&list{items: items}, name, args, nil, block, s, at)
	}
	return m.rbList(&list{items: items}, name, args, nil, block, s, at)
}

// rbDefault is what a hash gives for a key that it does not have.
func (m *machine) rbDefault(o *object, key any, at spot) (any, bool, error) {
	switch d := o.other.(type) {
	case nil:
		return nil, true, nil
	case *function:
		v, err := m.rbYield(d, []any{o, key}, at)
		return v, true, err
	default:
		return d, true, nil
	}
}

// rbStruct reports whether a class is a structure.
func rbStruct(c *class) bool {
	for _, x := range c.line() {
		if len(x.tupled) > 0 {
			return true
		}
		if n := x.node; n.Is(code.Class) && n.Kid(0).Is(code.Array) && n.Kids[0].Off == n.Kids[0].End && len(n.Kids[0].Kids) == 0 && n.Off == n.Kids[0].Off {
			return true
		}
	}
	return false
}

// rbFields are the methods that structures have by their fields.
func (m *machine) rbFields(o *object, name string, args []any, block any, at spot) (any, bool, error) {
	l, names, h := &list{}, &list{}, newObject()
	h.dict = true
	for _, k := range o.keys {
		if field, ok := strings.CutPrefix(k, "@"); ok {
			l.items = append(l.items, o.cells[k].v)
			names.items = append(names.items, symbol(field))
			h.set(symbolKey+field, o.cells[k].v)
		}
	}
	switch name {
	case "to_a", "deconstruct", "values":
		return l, true, nil
	case "to_h":
		return h, true, nil
	case "members":
		return names, true, nil
	case "each":
		return m.rbEach(l, block, o, at)
	case "[]", "dig":
		if i, ok := first(args).(integer); ok {
			return rbAt(l.items, int(i)), true, nil
		}
		v, _ := h.get(symbolKey + rbShow(first(args)))
		if v == any(undefined) {
			v = nil
		}
		return v, true, nil
	case "[]=":
		o.set("@"+rbShow(first(args)), at2(args, 1))
		return at2(args, 1), true, nil
	case "with":
		return nil, true, giveUp("a structure that is changed")
	}
	return nil, false, nil
}

// rbKernel are the functions that a program may call anywhere.
func (m *machine) rbKernel(self any, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	text := func(i int) string { return rbShow(at2(args, i)) }
	switch name {
	case "puts", "print", "p", "pp", "warn", "printf", "sleep", "srand", "private", "public", "protected", "module_function", "using", "putc", "flush", "private_constant", "set_trace_func":
		if name == "p" && len(args) == 1 {
			return args[0], true, nil
		}
		return nil, true, nil
	case "require", "require_relative", "load":
		if len(args) == 0 {
			return nil, true, nil
		}
		to, ok := args[0].(string)
		if !ok {
			return nil, true, giveUp("a file that is named while the program runs")
		}
		v, err := m.rbRequire(to, name, s, at)
		return v, true, err
	case "autoload":
		return nil, true, m.rbAutoload(text(1), s, at)
	case "raise", "fail":
		if len(args) == 0 {
			if c := rbLocal(s, "\x00caught"); c != nil {
				return nil, true, &thrown{c.v}
			}
			return nil, true, raise("RuntimeError", "unhandled exception")
		}
		v := args[0]
		if c, ok := v.(*class); ok {
			o, err := m.rbNew(c, args[1:], nil, nil, at)
			if err != nil {
				return nil, true, err
			}
			v = o
		} else if o, ok := v.(*opaque); ok {
			return nil, true, raise(strings.TrimSuffix(strings.TrimSuffix(o.path, "()"), ".new"), text(1))
		}
		return nil, true, m.rbThrown(v, at.n, s)
	case "exit", "exit!", "abort":
		return nil, true, &exit{}
	case "at_exit", "trap", "set_trace":
		return nil, true, nil
	case "refine":
		f, ok := block.(*function)
		if !ok {
			break
		}
		switch to := first(args).(type) {
		case *class:
			return nil, true, m.rbInside(to, f.node.Kid(1), f.scope)
		case *opaque:
			if rbCore[to.path] {
				return nil, true, m.rbInside(m.rbCoreOf(to.path, f.node, f.scope), f.node.Kid(1), f.scope)
			}
		}
		return nil, true, giveUp("what is refined")
	case "exec", "system", "`", "spawn":
		v, err := m.rbLaunches(name, args, kw, at)
		return v, true, err
	case "fork":
		m.forks = true
		if block != nil {
			v, err := m.rbYield(block, nil, at)
			return v, true, err
		}
		return dontKnow("a process of its own"), true, nil
	case "loop":
		for range maxTurns {
			if _, err := m.rbYield(block, nil, at); err != nil {
				if t, ok := err.(*thrown); ok {
					if o, ok := t.v.(*object); ok && o.class != nil && o.class.name == "StopIteration" {
						return nil, true, nil
					}
				}
				return nil, true, err
			}
		}
		if len(m.calls) > 0 {
			return nil, true, &exit{stays: true}
		}
		return nil, true, giveUp("a loop without an end")
	case "catch":
		tag := first(args)
		v, err := m.rbYield(block, []any{tag}, at)
		if l, ok := err.(*leave); ok && l.kind == "thrown" {
			if same, _ := rbEqual(l.owner, tag); same {
				return l.v, true, nil
			}
		}
		return v, true, err
	case "throw":
		v := any(nil)
		if len(args) > 1 {
			v = args[1]
		}
		return nil, true, &leave{kind: "thrown", owner: first(args), v: v}
	case "lambda", "proc":
		if f, ok := block.(*function); ok {
			w := *f
			w.static = name == "lambda"
			return &w, true, nil
		}
	case "block_given?":
		return s.frame().block != nil, true, nil
	case "binding", "caller", "caller_locations", "rand", "gets", "readline", "open", "eval", "select":
		return dontKnow("what " + name + " gives"), true, nil
	case "Integer":
		v, ok := any(nil), false
		switch x := first(args).(type) {
		case integer:
			v, ok = x, true
		case float64:
			v, ok = integer(math.Trunc(x)), true
		case string:
			t := x
			if base, isBase := at2(args, 1).(integer); isBase && base == 10 {
				if t = strings.TrimLeft(strings.TrimSpace(x), "0"); t == "" && x != "" {
					t = "0"
				}
			}
			i, fits := rbInteger(t)
			if base, isBase := at2(args, 1).(integer); isBase && base >= 2 && base <= 36 && base != 10 {
				digits := strings.ToLower(strings.TrimSpace(x))
				for n, front := range map[integer]string{16: "0x", 2: "0b", 8: "0o"} {
					if n == base {
						digits = strings.TrimPrefix(digits, front)
					}
				}
				n, err := strconv.ParseInt(digits, int(base), 64)
				i, fits = int(n), err == nil
			}
			v, ok = integer(i), fits
		case *opaque:
			return dontKnow("what is made of " + x.String()), true, nil
		}
		if !ok {
			if kw != nil {
				if e, has := kw.get(symbolKey + "exception"); has && e == any(false) {
					return nil, true, nil
				}
			}
			if first(args) == nil {
				return nil, true, certainly("TypeError", "can't convert nil into Integer")
			}
			return nil, true, raise("ArgumentError", "invalid value for Integer()")
		}
		return v, true, nil
	case "URI":
		return m.rbLibrary(&opaque{path: "URI"}, "parse", args, kw, block, s, at)
	case "Float":
		switch x := first(args).(type) {
		case integer:
			return float64(x), true, nil
		case float64:
			return x, true, nil
		case string:
			f, err := strconv.ParseFloat(strings.TrimSpace(x), 64)
			if err != nil {
				return nil, true, raise("ArgumentError", "invalid value for Float()")
			}
			return f, true, nil
		case *opaque:
			return dontKnow("what is made of " + x.String()), true, nil
		}
		return nil, true, mistaken(first(args), nil, "TypeError", "can't convert into Float")
	case "String":
		if o, ok := first(args).(*opaque); ok {
			return dontKnow("what is made of " + o.String()), true, nil
		}
		t, err := m.rbText(first(args), at)
		return t, true, err
	case "Array":
		items, err := m.rbItems(first(args))
		return &list{items: items}, true, err
	case "Hash":
		if first(args) == nil {
			o := newObject()
			o.dict = true
			return o, true, nil
		}
		return first(args), true, nil
	case "format", "sprintf":
		if kw != nil {
			args = append(slices.Clone(args), kw)
		}
		if t, ok := first(args).(string); ok {
			v, err := m.rbFormat(t, args[1:], at)
			return v, true, err
		}
		return dontKnow("a format"), true, nil
	case "super":
		v, err := m.rbSuper(args, kw, block, s, at)
		return v, true, err
	case "set", "enable", "disable", "configure", "settings", "development?", "production?", "test?", "app_file", "environment", "root", "port", "bind":
		return m.rbSinatra(m.rbApp(self), self, name, args, kw, block, s, at)
	case "run!":
		if app := m.rbApp(self); app != nil {
			if o, ok := first(args).(*object); ok && kw == nil { // a hash that was made before
				kw = o
			}
			return nil, true, m.rbServe(app, kw, at)
		}
	case "using_environment":
		return nil, true, nil
	}
	return nil, false, nil
}

func rbDone(v any, err error) (any, bool, error) { return v, true, err }

// rbEvalText runs a text, as a rule what stands in a file, for an object.
func (m *machine) rbEvalText(text, name string, self any, s *scope) (any, error) {
	if err := m.use(len(text) * 4); err != nil {
		return nil, err
	}
	f := (*code.File)(nil)
	if p, ok := m.treePath(name); ok && name != "/" {
		f = m.e.Loader.File(p)
	}
	if f == nil || f.Lang != code.Ruby {
		f = code.ReadAs(code.Ruby, "", []byte(text), place.NewLines([]byte(text)))
	}
	if f.Body == nil {
		return nil, giveUp("code in a text")
	}
	mod := &module{file: f, exports: newObject()}
	in := &scope{vars: map[string]*cell{}, up: s, module: mod, static: f.Top, this: self, fn: s.fn, moved: true}
	mod.top = in
	return m.rbBody(f.Body.Kids, in)
}

// rbRequire loads a file of the tree; one from outside is a library.
func (m *machine) rbRequire(name, how string, s *scope, at spot) (any, error) {
	f := s.module.file
	ask := name
	if p, ok := strings.CutPrefix(name, root+"/"); ok {
		ask = "./" + strings.Repeat("../", strings.Count(f.Name, "/")) + p
	} else if how == "require_relative" && !strings.HasPrefix(name, ".") {
		ask = "./" + name
	} else if how != "require_relative" && strings.HasPrefix(name, "./") { // from the folder it runs in
		ask = "./" + strings.Repeat("../", strings.Count(f.Name, "/")) + path.Join(m.e.Dir, name)
	}
	to, ok := m.e.Loader.Resolve(f, ask, "")
	if !ok {
		if how == "require_relative" || strings.HasPrefix(name, root) {
			return nil, raise("LoadError", "cannot load such file -- "+name)
		}
		switch name {
		case "sinatra":
			if m.rb().classic == nil {
				m.rb().classic, m.rb().sinatra = &at, newObject()
				// Flags of the command line are set where it is loaded (Sinatra 3,
				// lib/sinatra/main.rb).
				args := m.argv()[1:]
				for i, a := range args {
					flag, _ := a.(string)
					name := map[string]string{"-p": "port", "-o": "bind", "-e": "environment"}[flag[:min(2, len(flag))]]
					switch {
					case name == "":
					case len(flag) > 2:
						m.rb().sinatra.set(name, flag[2:])
					case i+1 < len(args):
						m.rb().sinatra.set(name, args[i+1])
					}
				}
			}
		}
		return true, nil
	}
	_, err := m.load(to)
	return true, err
}

func (m *machine) rbAutoload(file string, s *scope, at spot) error {
	if m.rb().pending[file] {
		return nil
	}
	m.rb().pending[file] = true
	_, err := m.rbRequire(file, "require", s, at)
	return err
}

// rbCurrent are the parameters of a method by place, as they are now: what super without
// arguments hands on. Plain is false where it has others.
func rbCurrent(x *scope) (args []any, plain bool) {
	if x.fn.node == nil {
		return nil, false
	}
	for _, p := range paramsOf(x.fn.node.Kid(0)) {
		c := x.vars[p.Name]
		if p.Alias != "" || p.Flag&code.Rest != 0 || c == nil {
			return nil, false
		}
		args = append(args, c.v)
	}
	return args, len(args) > 0
}

// rbSuper calls the method of the same name of what the class comes from.
func (m *machine) rbSuper(args []any, kw *object, block any, s *scope, at spot) (any, error) {
	x := s.frame()
	if x.fn == nil || x.fn.home == nil {
		return nil, giveUp("a base that is not followed")
	}
	if at.n.Is(code.Name) { // all that it was given itself
		args, kw = x.given, x.givenKeys
		if now, plain := rbCurrent(x); plain {
			args = now
		}
	}
	if block == nil {
		block = x.block
	}
	static := false
	line := x.fn.home.line()
	if c, ok := x.this.(*class); ok {
		line, static = c.line(), true
	} else if o, ok := x.this.(*object); ok && o.class != nil {
		line = o.class.line()
	}
	i := slices.Index(line, x.fn.home)
	for _, c := range line[i+1:] {
		from := c.methods
		if static {
			from = c.statics
		}
		if v, ok := from.get(x.fn.name); ok {
			if f, ok := v.(*function); ok {
				w := *f
				w.home = c
				return m.rbInvoke(&w, x.this, args, kw, block, at)
			}
		}
	}
	if x.fn.name == "initialize" {
		o, _ := x.this.(*object)
		if o != nil && len(o.class.tupled) > 0 {
			f, err := m.rbFill(o.class, args, kw)
			if err != nil {
				return nil, err
			}
			for _, k := range f.(*object).keys {
				o.set(k, f.(*object).cells[k].v)
			}
			return nil, nil
		}
		if o != nil && o.class != nil {
			if rbFails(o.class) {
				if len(args) > 0 {
					o.set("message", args[0])
				}
				return nil, nil
			}
			if base := outer(o.class); base != nil {
				if o.made != nil {
					at = *o.made
				}
				return m.rbOutside(&opaque{path: base.path + ".new", recv: base}, args, kw, block, at)
			}
		}
		return nil, nil
	}
	switch x.fn.name {
	case "inherited", "included", "extended", "method_added", "respond_to_missing?":
		return nil, nil
	}
	return nil, giveUp("a base that is not followed")
}

// rbClassMethod are the methods that classes have.
func (m *machine) rbClassMethod(c *class, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	text := func(i int) string { return rbShow(at2(args, i)) }
	switch name {
	case "new", "[]":
		if name == "[]" && len(c.tupled) == 0 {
			return nil, false, nil
		}
		v, err := m.rbNew(c, args, kw, block, at)
		return v, true, err
	case "allocate":
		o := newObject()
		o.class = c
		return o, true, nil
	case "attr_reader", "attr_accessor", "attr_writer", "cattr_accessor", "mattr_accessor", "class_attribute", "attr":
		for _, a := range args {
			if c.readable == nil {
				c.readable = map[string]bool{}
			}
			c.readable[rbShow(a)] = name != "attr_writer"
		}
		return nil, true, nil
	case "private_class_method", "public_class_method", "private_constant", "private", "public", "protected", "undef_method", "remove_method", "helpers", "register", "not_found", "error", "before", "after", "get", "post", "put", "delete", "patch", "options", "head", "use":
		if base := outer(c); base != nil && strings.HasPrefix(base.path, "Sinatra.") {
			return nil, true, nil
		}
		if strings.HasPrefix(name, "p") && name != "post" && name != "put" && name != "patch" || name == "undef_method" || name == "remove_method" {
			return nil, true, nil
		}
	case "module_function":
		if len(args) == 0 {
			c.selfish = true
			return nil, true, nil
		}
		for _, a := range args {
			if v, ok := c.methods.get(rbShow(a)); ok {
				c.statics.set(rbShow(a), v)
			}
		}
		return nil, true, nil
	case "include", "prepend":
		for _, a := range args {
			if b, ok := a.(*class); ok {
				c.bases = append([]any{b}, c.bases...)
				if f, _ := m.rbFind(b, "included"); f != nil && f.home != nil {
					if _, err := m.rbInvoke(f, b, []any{c}, nil, nil, at); err != nil {
						return nil, true, err
					}
				}
			}
		}
		return c, true, nil
	case "define_method":
		f, ok := block.(*function)
		if !ok {
			f, ok = at2(args, 1).(*function)
		}
		if !ok || !known(first(args)) {
			return nil, true, giveUp("a method that is made while the program runs")
		}
		w := &function{name: text(0), home: c}
		w.native = func(m *machine, this any, a []any, _ map[string]any, at spot) (any, error) {
			g := *f
			g.moved = true
			g.static = true
			v, err := m.rbRun(&g, this, a, nil, nil, at)
			if l, ok := err.(*leave); ok && (l.kind == "continue" || l.kind == "return") {
				return l.v, nil
			}
			return v, err
		}
		c.methods.set(text(0), w)
		if c.selfish {
			c.statics.set(text(0), w)
		}
		return symbol(text(0)), true, nil
	case "alias_method":
		if f, _ := rbMethod(c, text(1)); f != nil {
			c.methods.set(text(0), f)
		}
		return nil, true, nil
	case "name", "to_s":
		return c.name, true, nil
	case "members":
		l := &list{}
		for _, t := range c.tupled {
			l.items = append(l.items, symbol(show(t)))
		}
		return l, true, nil
	case "const_get":
		if !known(first(args)) {
			return nil, true, giveUp("a class that is named while the program runs")
		}
		for _, part := range strings.Split(text(0), "::") {
			v, ok := classKey(c, part, true)
			if !ok {
				if v, ok = m.rb().consts.get(part); !ok {
					return nil, true, giveUp("a constant that is not found")
				}
			}
			d, isClass := v.(*class)
			if !isClass {
				return v, true, nil
			}
			c = d
		}
		return c, true, nil
	case "const_set":
		c.statics.set(text(0), at2(args, 1))
		return at2(args, 1), true, nil
	case "const_defined?":
		_, ok := classKey(c, text(0), true)
		return ok, true, nil
	case "instance_methods", "ancestors", "superclass", "instance_method":
		return dontKnow(name), true, nil
	case "instance":
		if v, ok := c.statics.get("\x00instance"); ok {
			return v, true, nil
		}
		v, err := m.rbNew(c, nil, nil, nil, at)
		c.statics.set("\x00instance", v)
		return v, true, err
	case "def_delegators", "def_delegator", "delegate":
		return nil, true, m.rbDelegates(c, name, args, kw)
	case "===":
		takes, ok, err := m.rbCase(c, first(args), s, at)
		if err != nil || !ok {
			return dontKnow("whether a case fits"), true, err
		}
		return takes, true, nil
	}
	return m.rbKernel(c, name, args, kw, block, s, at)
}

// rbDelegates makes methods that hand on (Ruby 3.4, "Forwardable").
func (m *machine) rbDelegates(c *class, name string, args []any, kw *object) error {
	to, names := first(args), args[min(1, len(args)):]
	if name == "delegate" {
		if kw == nil {
			return giveUp("what is delegated")
		}
		to, _ = kw.get(symbolKey + "to")
		names = args
	}
	if name == "def_delegator" && len(names) > 1 {
		return giveUp("what is delegated")
	}
	for _, n := range names {
		method := rbShow(n)
		w := &function{name: method, home: c}
		w.native = func(m *machine, this any, a []any, _ map[string]any, at spot) (any, error) {
			of := any(nil)
			target := rbShow(to)
			if o, ok := this.(*object); ok && strings.HasPrefix(target, "@") {
				of, _ = o.get(target)
			} else {
				var err error
				if of, err = m.rbSend(this, target, nil, nil, nil, m.topOf(at), at); err != nil {
					return nil, err
				}
			}
			return m.rbSend(of, method, a, nil, nil, m.topOf(at), at)
		}
		c.methods.set(method, w)
		if c.selfish {
			c.statics.set(method, w)
		}
	}
	return nil
}

// rbSpecial are the methods of objects that this package makes.
func (m *machine) rbSpecial(o *object, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	switch o.class.name {
	case "ERB":
		if name == "result" || name == "result_with_hash" {
			in := s.inner()
			if name == "result_with_hash" {
				h, ok := first(args).(*object)
				if !ok && kw != nil {
					h = kw
				}
				if h == nil {
					return dontKnow("a template"), true, nil
				}
				for _, k := range h.keys {
					in.declare(strings.TrimPrefix(k, symbolKey), h.cells[k].v)
				}
			}
			t, _ := o.get("text")
			v, err := m.rbTemplate(show(t), in, at)
			return v, true, err
		}
	case "MatchData":
		switch name {
		case "[]":
			v, ok := o.get(strings.TrimPrefix(rbKey(first(args)), symbolKey))
			if !ok {
				return nil, true, nil
			}
			return v, true, nil
		case "captures", "to_a":
			l := &list{}
			for i := 0; ; i++ {
				v, ok := o.get(numberKey + strconv.Itoa(i))
				if !ok {
					break
				}
				if i > 0 || name == "to_a" {
					l.items = append(l.items, v)
				}
			}
			return l, true, nil
		case "named_captures":
			h := newObject()
			h.dict = true
			for _, k := range o.keys {
				if k[0] != numberKey[0] && k != "begin" {
					h.set(k, o.cells[k].v)
				}
			}
			return h, true, nil
		case "pre_match", "post_match":
			return dontKnow(name), true, nil
		}
	case "OptionParser":
		return m.rbOptions(o, name, args, kw, block, s, at)
	case "OpenStruct":
		switch name {
		case "[]", "dig":
			v, ok := o.get("@" + rbShow(first(args)))
			if !ok {
				return nil, true, nil
			}
			return v, true, nil
		case "[]=":
			o.set("@"+rbShow(first(args)), at2(args, 1))
			return at2(args, 1), true, nil
		case "to_h":
			h := newObject()
			h.dict = true
			for _, k := range o.keys {
				h.set(symbolKey+strings.TrimPrefix(k, "@"), o.cells[k].v)
			}
			return h, true, nil
		}
		if plain, ok := strings.CutSuffix(name, "="); ok {
			o.set("@"+plain, first(args))
			return first(args), true, nil
		}
		if v, ok := o.get("@" + name); ok {
			return v, true, nil
		}
		return nil, len(args) == 0, nil
	case "URI":
		if v, ok := o.get(name); ok && len(args) == 0 {
			return v, true, nil
		}
	}
	switch name {
	case "message", "full_message", "to_s":
		if v, ok := o.get("message"); ok {
			return v, true, nil
		}
	case "backtrace", "cause":
		return &list{}, true, nil
	}
	return nil, false, nil
}

// option is one of a parser of the command line.
type rbOption struct {
	short, long string
	takes       bool // a value
	maybe       bool
	negated     bool // --[no-]name
	kind        string
	block       any
}

// rbOptions are the methods of OptionParser.
func (m *machine) rbOptions(o *object, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	switch name {
	case "banner=", "separator", "version=", "program_name=", "on_tail", "on_head", "to_s", "help", "banner", "release=", "summary_width=", "version", "program_name", "require_exact=":
		if name == "on_tail" || name == "on_head" {
			break
		}
		return "", true, nil
	}
	switch name {
	case "on", "on_tail", "on_head", "define":
		opt := &rbOption{block: block}
		for _, a := range args {
			switch a := a.(type) {
			case string:
				switch {
				case strings.HasPrefix(a, "--"):
					word, rest := a, ""
					if i := strings.IndexAny(a, " =["); i >= 0 && !strings.HasPrefix(a, "--[no-]") {
						word, rest = a[:i], a[i:]
					}
					if n, ok := strings.CutPrefix(word, "--[no-]"); ok {
						opt.negated = true
						word = "--" + n
						if i := strings.IndexAny(n, " ="); i >= 0 {
							word, rest = "--"+n[:i], n[i:]
						}
					}
					opt.long = word
					opt.takes = opt.takes || rest != ""
					opt.maybe = opt.maybe || strings.Contains(rest, "[")
				case strings.HasPrefix(a, "-") && len(a) > 1:
					opt.short = a[:2]
					opt.takes = opt.takes || len(a) > 2
					opt.maybe = opt.maybe || strings.Contains(a, "[")
				}
			case *opaque:
				opt.kind = a.path
			case *list:
				opt.kind = "Array of words"
			case *pattern:
				opt.kind = "pattern"
			}
		}
		m.options[o] = append(m.options[o], opt)
		return o, true, nil
	case "parse!", "parse", "order!", "permute!", "order", "permute":
		v, err := m.rbParse(o, name, args, kw, s, at)
		return v, true, err
	}
	return nil, false, nil
}

func (m *machine) rbParse(o *object, name string, args []any, kw *object, s *scope, at spot) (any, error) {
	l := m.argvList
	if l == nil {
		l = &list{items: m.argv()[1:]}
		m.argvList = l
	}
	if len(args) > 0 {
		x, ok := args[0].(*list)
		if !ok {
			return nil, undecided("arguments that are not known")
		}
		l = x
	}
	var into *object
	if kw != nil {
		v, _ := kw.get(symbolKey + "into")
		into, _ = v.(*object)
	}
	rest := &list{}
	set := func(opt *rbOption, v any) error {
		if into != nil {
			k := opt.long
			if k == "" {
				k = opt.short
			}
			into.set(symbolKey+strings.TrimLeft(k, "-"), v)
		}
		if opt.block == nil {
			return nil
		}
		_, err := m.rbYield(opt.block, []any{v}, at)
		return err
	}
	convert := func(opt *rbOption, t any) (any, error) {
		x, ok := t.(string)
		if !ok {
			return t, nil
		}
		bad := raise("OptionParser.InvalidArgument", "invalid argument: "+opt.long)
		switch opt.kind {
		case "Integer", "OptionParser.DecimalInteger", "Numeric":
			i, ok := rbInteger(x)
			if !ok {
				return nil, bad
			}
			return integer(i), nil
		case "Float":
			f, err := strconv.ParseFloat(x, 64)
			if err != nil {
				return nil, bad
			}
			return f, nil
		case "Symbol":
			return symbol(x), nil
		case "Array":
			l := &list{}
			for _, p := range strings.Split(x, ",") {
				l.items = append(l.items, p)
			}
			return l, nil
		case "", "String", "Array of words":
			return x, nil
		}
		return nil, giveUp("an option of the kind %s", opt.kind)
	}
	items := slices.Clone(l.items)
	for i := 0; i < len(items); i++ {
		word, ok := items[i].(string)
		if !ok {
			return nil, undecided("an argument that is not known")
		}
		if word == "--" {
			rest.items = append(rest.items, items[i+1:]...)
			break
		}
		if !strings.HasPrefix(word, "-") || word == "-" {
			rest.items = append(rest.items, word)
			continue
		}
		var opt *rbOption
		value, has, no := any(nil), false, false
		if strings.HasPrefix(word, "--") {
			flag, v, eq := strings.Cut(word, "=")
			var near []*rbOption
			for _, x := range m.options[o] {
				switch {
				case x.long == flag:
					opt = x
				case x.negated && "--no-"+x.long[min(2, len(x.long)):] == flag:
					opt, no = x, true
				case x.long != "" && strings.HasPrefix(x.long, flag):
					near = append(near, x)
				}
			}
			if opt == nil && len(near) == 1 {
				opt = near[0]
			}
			if eq {
				value, has = v, true
			}
		} else {
			for _, x := range m.options[o] {
				if x.short != "" && x.short == word[:2] {
					opt = x
				}
			}
			if len(word) > 2 {
				if opt != nil && !opt.takes {
					return nil, giveUp("several flags in one word")
				}
				value, has = word[2:], true
			}
		}
		if opt == nil {
			return nil, raise("OptionParser.InvalidOption", "invalid option: "+word)
		}
		switch {
		case !opt.takes:
			if err := set(opt, !no); err != nil {
				return nil, err
			}
			continue
		case !has && i+1 < len(items):
			next, isText := items[i+1].(string)
			if opt.maybe && isText && strings.HasPrefix(next, "-") {
				break
			}
			i++
			value, has = items[i], true
		}
		if !has && !opt.maybe {
			return nil, raise("OptionParser.MissingArgument", "missing argument: "+word)
		}
		v, err := convert(opt, value)
		if err != nil {
			return nil, err
		}
		if err := set(opt, v); err != nil {
			return nil, err
		}
	}
	if strings.HasSuffix(name, "!") {
		l.items = rest.items
	}
	return rest, nil
}

// rbNeeding are functions of Ruby that must be given a text (Ruby 3.4, classes File, Dir,
// IO and modules JSON, URI).
var rbNeeding = words("File.join File.read File.exist? File.file? File.open File.readlines File.expand_path File.dirname File.basename File.extname File.directory? Dir.exist? Dir.children IO.read JSON.parse URI.parse URI.join YAML.load_file Pathname.new Base64.decode64 Base64.strict_decode64 Shellwords.split")

// rbLibrary are the parts of the standard library and of gems that give what a
// program goes on with; done is false for any other.
func (m *machine) rbLibrary(o *opaque, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	text := func(i int) string { return rbShow(at2(args, i)) }
	if x := opaqueAmong(args); x != nil && o.path != "" {
		switch o.path + "." + name {
		case "File.join", "File.read", "File.expand_path", "File.exist?", "YAML.load_file", "JSON.parse", "YAML.load", "YAML.safe_load":
			return dontKnow("what is made of " + x.String()), true, nil
		}
	}
	if len(args) > 0 && rbNeeding[o.path+"."+name] && slices.Contains(args[:map[bool]int{true: len(args), false: 1}[o.path+"."+name == "File.join"]], nil) {
		return nil, true, certainly("TypeError", "no implicit conversion of nil into String")
	}
	if o.path == "Figaro.env()" && len(args) == 0 { // env.port, env.port!, env.port? (Figaro 1.2, "Figaro.env")
		v, set := m.env.get(strings.ToUpper(strings.TrimRight(name, "!?")))
		switch {
		case strings.HasSuffix(name, "?"):
			return set, true, nil
		case set:
			return v, true, nil
		case strings.HasSuffix(name, "!"):
			return nil, true, raise("Figaro.MissingKey", "a key that is missing")
		}
		return nil, true, nil
	}
	switch o.path + "." + name {
	case "File.join":
		var parts []string
		for i := range args {
			parts = append(parts, text(i))
		}
		return path.Join(parts...), true, nil
	case "File.expand_path", "File.realpath", "File.absolute_path":
		p := text(0)
		if len(args) > 1 && !strings.HasPrefix(p, "/") {
			base := text(1)
			if !strings.HasPrefix(base, "/") {
				base = path.Join(root, m.e.Dir, base)
			}
			p = path.Join(base, p)
		} else if !strings.HasPrefix(p, "/") {
			p = path.Join(root, m.e.Dir, p)
		}
		return path.Clean(p), true, nil
	case "File.dirname":
		return path.Dir(text(0)), true, nil
	case "File.basename":
		b := path.Base(text(0))
		if len(args) > 1 {
			if text(1) == ".*" {
				b = strings.TrimSuffix(b, path.Ext(b))
			}
			b = strings.TrimSuffix(b, text(1))
		}
		return b, true, nil
	case "File.extname":
		return path.Ext(text(0)), true, nil
	case "File.exist?", "File.file?", "File.readable?", "File.directory?", "Dir.exist?":
		folder := o.path == "Dir" || name == "directory?"
		return m.there(text(0), !folder, folder || name == "exist?"), true, nil
	case "File.read", "IO.read", "File.open", "File.readlines", "File.foreach", "IO.readlines":
		v := m.readFile(text(0))
		if t, ok := v.(*thrown); ok {
			return nil, true, raise("Errno.ENOENT", t.String())
		}
		c, ok := v.(*content)
		if !ok {
			return v, true, nil
		}
		switch name {
		case "open":
			if block != nil {
				v, err := m.rbYield(block, []any{c}, at)
				return v, true, err
			}
			return c, true, nil
		case "readlines", "foreach":
			items, err := m.items(c, nil)
			if err != nil {
				return nil, true, err
			}
			l := &list{}
			chomp := false
			if kw != nil {
				if x, _ := kw.get(symbolKey + "chomp"); x == any(true) {
					chomp = true
				}
			}
			for _, x := range items {
				if t, ok := x.(string); ok && chomp {
					x = strings.TrimSuffix(t, "\n")
				}
				l.items = append(l.items, x)
			}
			if name == "foreach" && block != nil {
				return m.rbEach(l, block, nil, at)
			}
			return l, true, nil
		}
		return c, true, nil
	case "Dir.pwd", "Dir.getwd":
		return path.Join(root, m.e.Dir), true, nil
	case "Rack.Handler.get", "Rackup.Handler.get": // Rack 2.2, lib/rack/handler.rb
		if module := rackHandlers[strings.ToLower(text(0))]; module != "" {
			return &opaque{path: o.path + "." + module}, true, nil
		}
	case "YAML.load_file", "YAML.safe_load_file", "YAML.unsafe_load_file", "Psych.load_file", "JSON.load_file", "JSON.parse", "JSON.load", "YAML.load", "YAML.safe_load", "YAML.unsafe_load", "Psych.load", "TOML.load_file", "TomlRB.load_file", "Tomlrb.load_file", "JSON.parse!", "Psych.safe_load":
		from := first(args)
		if strings.HasSuffix(name, "load_file") {
			from = m.readFile(text(0))
			if t, ok := from.(*thrown); ok {
				return nil, true, raise("Errno.ENOENT", t.String())
			}
		}
		if t, ok := from.(string); ok && !strings.HasPrefix(o.path, "JSON") {
			v, err := m.parsedText(t, strings.HasPrefix(o.path, "TOML"))
			if kw != nil && err == nil {
				if x, _ := kw.get(symbolKey + "symbolize_names"); x == any(true) {
					v = rbSymbols(v)
				}
			}
			return v, true, err
		}
		if from == nil {
			return nil, true, certainly("TypeError", "no implicit conversion of nil into String")
		}
		if c, ok := from.(*content); ok && strings.Contains(c.text, "<%") {
			return dontKnow("a template"), true, nil
		}
		v, err := m.parsed(from)
		if t, ok := err.(*thrown); ok {
			return nil, true, raise("JSON.ParserError", t.String())
		}
		if err != nil {
			return nil, true, err
		}
		if kw != nil {
			if x, _ := kw.get(symbolKey + "symbolize_names"); x == any(true) {
				v = rbSymbols(v)
			}
		}
		return v, true, nil
	case "ERB.new":
		from := first(args)
		if c, ok := from.(*content); ok {
			if !strings.Contains(c.text, "<%") {
				return c, true, nil
			}
			from = c.text
		}
		if _, ok := from.(string); !ok {
			return dontKnow("a template"), true, nil
		}
		t := newObject()
		t.class = &class{name: "ERB", builtin: true, statics: newObject(), methods: newObject()}
		t.set("text", from)
		return t, true, nil
	case "OptionParser.new":
		p := newObject()
		p.class = &class{name: "OptionParser", builtin: true, statics: newObject(), methods: newObject()}
		if m.options == nil {
			m.options = map[*object][]*rbOption{}
		}
		if block != nil {
			if _, err := m.rbYield(block, []any{p}, at); err != nil {
				return nil, true, err
			}
		}
		return p, true, nil
	case "Struct.new", "Data.define":
		c := &class{scope: s, node: at.n, statics: newObject(), methods: newObject(), tupled: []any{}}
		for _, a := range args {
			if t, ok := a.(symbol); ok {
				c.tupled = append(c.tupled, string(t))
			} else if t, ok := a.(string); ok {
				c.tupled = append(c.tupled, t)
			}
		}
		if f, ok := block.(*function); ok {
			if err := m.rbInside(c, f.node.Kid(1), f.scope); err != nil {
				return nil, true, err
			}
		}
		return c, true, nil
	case "Figaro.load":
		return nil, true, m.figaro(o)
	case "OpenStruct.new":
		x := newObject()
		x.class = &class{name: "OpenStruct", builtin: true, statics: newObject(), methods: newObject()}
		if kw != nil {
			args = append(slices.Clone(args), kw)
		}
		for _, a := range args {
			if d, ok := a.(*object); ok && d.dict {
				for _, k := range d.keys {
					x.set("@"+strings.TrimPrefix(k, symbolKey), d.cells[k].v)
				}
			}
		}
		return x, true, nil
	case "Hash.new":
		h := newObject()
		h.dict = true
		if block != nil {
			h.other = block
		} else if len(args) > 0 {
			h.other = args[0]
		}
		return h, true, nil
	case "Array.new":
		l := &list{}
		n, ok := first(args).(integer)
		if !ok || n > maxItems {
			return l, len(args) == 0, nil
		}
		for i := range n {
			v := any(nil)
			if len(args) > 1 {
				v = args[1]
			}
			if block != nil {
				var err error
				if v, err = m.rbYield(block, []any{i}, at); err != nil {
					return nil, true, err
				}
			}
			l.items = append(l.items, v)
		}
		return l, true, nil
	case "Set.new", "Set.[]":
		l := &list{unique: true}
		items := args
		if name == "new" {
			var err error
			if items, err = m.rbItems(first(append(args, nil))); err != nil {
				return nil, true, err
			}
		}
		if len(items) > 1 && unclear(items, 0) != nil {
			return dontKnow("a set of what is not known"), true, nil
		}
		for _, x := range items {
			if !slices.ContainsFunc(l.items, func(y any) bool { same, _ := rbEqual(x, y); return same }) {
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "String.new":
		return text(0), true, nil
	case "Object.new":
		x := newObject()
		x.class = &class{name: "Object", builtin: true, statics: newObject(), methods: newObject()}
		return x, true, nil
	case "Proc.new":
		return block, true, nil
	case "Class.new", "Module.new":
		c := &class{scope: s, node: at.n, statics: newObject(), methods: newObject()}
		if len(args) > 0 {
			c.bases = append(c.bases, args[0])
		}
		if f, ok := block.(*function); ok {
			if err := m.rbInside(c, f.node.Kid(1), f.scope); err != nil {
				return nil, true, err
			}
		}
		return c, true, nil
	case "Integer.sqrt", "Time.now", "Process.clock_gettime", "SecureRandom.hex":
		return dontKnow("what " + name + " gives"), true, nil
	case "Regexp.union", "Regexp.new", "Regexp.escape":
		return nil, true, giveUp("a regular expression that is made")
	case "Process.exit", "Kernel.exit", "Kernel.abort", "Process.exit!":
		return nil, true, &exit{}
	case "Process.fork":
		return m.rbKernel(m.rb().main, "fork", args, kw, block, s, at)
	case "Process.spawn", "Kernel.spawn", "Process.exec", "Kernel.exec", "Kernel.system":
		v, err := m.rbLaunches(name, args, kw, at)
		return v, true, err
	case "Process.wait", "Process.waitall", "Process.wait2", "Process.waitpid":
		if m.spawned {
			return nil, true, &exit{stays: true}
		}
		return nil, true, nil
	case "Process.daemon":
		return nil, true, nil
	case "Signal.trap", "Kernel.trap":
		return nil, true, nil
	case "Thread.new", "Thread.start", "Ractor.new", "Fiber.new":
		v, err := m.rbYield(block, args, at)
		if err != nil {
			if x, ok := err.(*exit); ok && x.stays { // it stays in the thread
				return &opaque{path: "Thread.new()"}, true, nil
			}
			if _, raised := err.(*thrown); raised && name == "new" && o.path == "Thread" { // it ends the thread, and whoever waits for it
				t := newObject()
				t.class = &class{name: "Thread", builtin: true, statics: newObject(), methods: newObject()}
				for _, waits := range []string{"join", "value"} {
					t.class.methods.set(waits, &function{name: waits, native: func(*machine, any, []any, map[string]any, spot) (any, error) { return nil, err }})
				}
				return t, true, nil
			}
			return nil, true, err
		}
		_ = v
		return &opaque{path: "Thread.new()"}, true, nil
	case "Object.const_get", "Kernel.const_get":
		if v, ok := m.rb().consts.get(text(0)); ok {
			return v, true, nil
		}
		return m.package1(strings.ReplaceAll(text(0), "::", ".")), true, nil
	case "Kernel.Integer", "Kernel.Float", "Kernel.format", "Kernel.sprintf", "Kernel.loop", "Kernel.raise":
		return m.rbKernel(m.rb().main, name, args, kw, block, s, at)
	case "URI.parse":
		v, done, err := m.made(&opaque{path: "URL"}, args, at)
		x, ok := v.(*object)
		if err != nil || !ok {
			return dontKnow("an address"), done, nil
		}
		u := newObject()
		u.class = &class{name: "URI", builtin: true, statics: newObject(), methods: newObject()}
		host, _ := x.get("hostname")
		port, _ := x.get("port")
		u.set("host", host)
		u.set("hostname", host)
		user, _ := x.get("username")
		password, _ := x.get("password")
		u.set("user", user)
		u.set("password", password)
		if u.set("userinfo", nil); show(user) != "" {
			u.set("userinfo", strings.TrimSuffix(show(user)+":"+show(password), ":"))
		}
		query, _ := x.get("search")
		if u.set("query", nil); show(query) != "" {
			u.set("query", strings.TrimPrefix(show(query), "?"))
		}
		scheme, _ := x.get("protocol")
		u.set("scheme", strings.TrimSuffix(show(scheme), ":"))
		way, _ := x.get("pathname")
		u.set("path", way)
		if p, ok := atoi(show(port)); ok {
			u.set("port", integer(p))
		} else {
			u.set("port", map[bool]any{true: integer(443), false: integer(80)}[strings.HasPrefix(text(0), "https")])
		}
		return u, true, nil
	case "Etc.nprocessors", "Concurrent.physical_processor_count":
		return integer(2), true, nil
	case "Sinatra.new":
		return nil, true, giveUp("an application that is made while the program runs")
	case "$stdout.sync=", "$stderr.sync=", "STDOUT.sync=", "$stdout.puts", "$stderr.puts", "STDOUT.puts", "STDERR.puts", "$stdout.write", "$stdout.flush", "$LOAD_PATH.unshift", "$LOAD_PATH.<<":
		return nil, true, nil
	}
	switch name {
	case "nil?":
		if o.path != "" && !strings.Contains(o.path, "()") {
			return false, true, nil
		}
		return dontKnow("whether " + o.String() + " is there"), true, nil
	case "freeze", "itself", "dup":
		return o, true, nil
	case "tap":
		if _, err := m.rbYield(block, []any{o}, at); err != nil {
			return nil, true, err
		}
		return o, true, nil
	case "is_a?", "kind_of?", "respond_to?", "==", "!=":
		return dontKnow("what " + o.String() + " is"), true, nil
	case "join", "value":
		if strings.HasSuffix(o.path, "Thread.new()") && len(m.calls) > 0 {
			return nil, true, &exit{stays: true}
		}
	case "extend":
		return o, true, nil
	}
	return nil, false, nil
}

// rbSymbols makes symbols of the keys of data.
func rbSymbols(v any) any {
	switch v := v.(type) {
	case *list:
		for i, x := range v.items {
			v.items[i] = rbSymbols(x)
		}
	case *object:
		h := newObject()
		h.dict = true
		for _, k := range v.keys {
			h.set(symbolKey+k, rbSymbols(v.cells[k].v))
		}
		return h
	}
	return v
}

// rbApp are the settings of the application of Sinatra that something belongs
// to; nil where it is none.
func (m *machine) rbApp(self any) *object {
	c, ok := self.(*class)
	if o, isObject := self.(*object); isObject && o.class != nil {
		c, ok = o.class, true
	}
	if !ok || c == nil {
		return m.rb().sinatra
	}
	base := outer(c)
	if base == nil || !strings.HasPrefix(base.path, "Sinatra.") {
		return nil
	}
	app := m.rb().apps[c]
	if app == nil {
		app = newObject()
		for _, x := range c.line()[1:] {
			if up := m.rb().apps[x]; up != nil {
				for _, k := range up.keys {
					app.set(k, up.cells[k].v)
				}
			}
		}
		m.rb().apps[c] = app
	}
	return app
}

// rbMode is the environment that an application of Sinatra runs for.
func (m *machine) rbMode(app *object, at spot) string {
	if v, ok := app.get("environment"); ok {
		return rbShow(v)
	}
	for _, name := range []string{"APP_ENV", "RACK_ENV"} {
		if v, ok := m.lookup(name, at); ok {
			return v
		}
	}
	return "development"
}

// rbSinatra are the settings of an application (Sinatra: README,
// "Configuration"; read 2026-11).
func (m *machine) rbSinatra(app *object, self any, name string, args []any, kw *object, block any, s *scope, at spot) (any, bool, error) {
	if app == nil {
		return nil, false, nil
	}
	switch name {
	case "set":
		if kw != nil {
			for _, k := range kw.keys {
				app.set(strings.TrimPrefix(k, symbolKey), kw.cells[k].v)
			}
		}
		if d, ok := first(args).(*object); ok && d.dict {
			for _, k := range d.keys {
				app.set(strings.TrimPrefix(k, symbolKey), d.cells[k].v)
			}
			return nil, true, nil
		}
		if len(args) > 1 {
			app.set(rbShow(args[0]), args[1])
		} else if len(args) == 1 && block != nil {
			app.set(rbShow(args[0]), dontKnow("a setting that is worked out later"))
		}
		return nil, true, nil
	case "enable", "disable":
		for _, a := range args {
			app.set(rbShow(a), name == "enable")
		}
		return nil, true, nil
	case "configure":
		mode := m.rbMode(app, at)
		if len(args) == 0 || slices.ContainsFunc(args, func(a any) bool { return rbShow(a) == mode }) {
			_, err := m.rbYield(block, []any{self}, at)
			return nil, true, err
		}
		return nil, true, nil
	case "development?", "production?", "test?":
		return m.rbMode(app, at) == strings.TrimSuffix(name, "?"), true, nil
	case "settings":
		h := newObject()
		h.class = &class{name: "OpenStruct", builtin: true, statics: newObject(), methods: newObject()}
		mode := m.rbMode(app, at)
		h.set("@environment", symbol(mode))
		for _, k := range app.keys {
			h.set("@"+k, app.cells[k].v)
		}
		for _, k := range []string{"development", "production", "test"} {
			h.set("@"+k+"?", mode == k)
		}
		if _, ok := h.get("@root"); !ok {
			h.set("@root", path.Dir(root+"/"+m.main.Name))
		}
		return h, true, nil
	}
	if len(args) == 0 && block == nil { // a setting is a method of the application
		if v, ok := app.get(name); ok {
			return v, true, nil
		}
		switch c, isClass := self.(*class); {
		case name == "environment":
			return symbol(m.rbMode(app, at)), true, nil
		case name == "app_file" && isClass && c != nil:
			return root + "/" + at.f.Name, true, nil
		case name == "root" && isClass && c != nil:
			return path.Dir(root + "/" + at.f.Name), true, nil
		}
	}
	return nil, false, nil
}

// SinatraRuns is the path of the call that an application of Sinatra is run by.
const SinatraRuns = "Sinatra.Application.run!"

// rbServe notes that an application of Sinatra is run.
func (m *machine) rbServe(app *object, kw *object, at spot) error {
	if kw != nil {
		for _, k := range kw.keys {
			app.set(strings.TrimPrefix(k, symbolKey), kw.cells[k].v)
		}
	}
	keys := map[string]any{}
	for _, k := range []string{"port", "bind", "environment"} {
		if v, ok := app.get(k); ok {
			keys[k] = v
		}
	}
	m.note(m.package1(SinatraRuns), nil, keys, at)
	return &exit{stays: true}
}

// rbEnd is what happens at the end of a program of Ruby: an application in the
// classic style runs.
func (m *machine) rbEnd() error {
	r := m.rb()
	if r.classic == nil {
		return nil
	}
	if v, ok := r.sinatra.get("run"); ok && v == any(false) {
		return nil
	}
	if err := m.rbServe(r.sinatra, nil, *r.classic); err != nil {
		if x, ok := err.(*exit); !ok || !x.stays {
			return err
		}
	}
	return nil
}

// rbTemplate is what a template of ERB makes: its expressions are worked out, its
// comments left out; statements in it are not followed (Ruby 3.4, "ERB").
func (m *machine) rbTemplate(text string, s *scope, at spot) (any, error) {
	var b strings.Builder
	for {
		before, rest, found := strings.Cut(text, "<%")
		b.WriteString(before)
		if !found {
			return b.String(), nil
		}
		inside, after, ok := strings.Cut(rest, "%>")
		if !ok || b.Len() > maxText {
			return dontKnow("a template"), nil
		}
		if trimmed, cut := strings.CutSuffix(inside, "-"); cut {
			inside, after = trimmed, strings.TrimPrefix(after, "\n")
		}
		text = after
		switch {
		case strings.HasPrefix(inside, "#"):
			continue
		case !strings.HasPrefix(inside, "="):
			return dontKnow("a template with statements"), nil
		}
		src := []byte(strings.TrimSpace(inside[1:]))
		f := code.ReadAs(code.Ruby, "", src, place.NewLines(src))
		if f.Body == nil {
			return dontKnow("a template"), nil
		}
		mod := &module{file: f, exports: newObject()}
		in := &scope{vars: map[string]*cell{}, up: s, module: mod, static: f.Top, this: s.this, fn: s.fn}
		mod.top = in
		v, err := m.rbBody(f.Body.Kids, in)
		if err != nil {
			return nil, err
		}
		if !known(v) {
			return dontKnow("a template with what is not known"), nil
		}
		piece, err := m.rbText(v, at)
		if err != nil {
			return nil, err
		}
		b.WriteString(piece)
	}
}

// rackHandlers are the servers that Rack finds by their names.
var rackHandlers = map[string]string{"webrick": "WEBrick", "puma": "Puma", "thin": "Thin", "falcon": "Falcon"}
