package trace

import (
	"math"
	"regexp"
	"slices"
	"strings"
)

// Packages that read the command line of a program of JavaScript: minimist 1.2, mri 1.2,
// arg 5, sade 1.8 and rc 1.2; their source, read 2026-11.

// jsOptions is a function of one of them; done is false where it is none.
func (m *machine) jsOptions(f *opaque, args []any, at spot) (any, bool, error) {
	switch strings.TrimSuffix(f.path, ".default") {
	case "minimist":
		if words, opts, ok := m.optionsOf(args); ok {
			v, err := m.minimist(words, opts)
			return v, true, err
		}
	case "mri":
		if words, opts, ok := m.optionsOf(args); ok {
			v, err := mri(words, opts)
			return v, true, err
		}
	case "arg":
		if spec, ok := first(args).(*object); ok {
			v, err := m.argPackage(spec, at2(args, 1), at)
			return v, true, err
		}
	case "sade":
		if name, ok := first(args).(string); ok {
			return m.sade(name, at2(args, 1) == true), true, nil
		}
	case "rc":
		if name, ok := first(args).(string); ok && len(args) < 3 {
			v, err := m.rc(name, at2(args, 1), at)
			return v, true, err
		}
	}
	return nil, false, nil
}

// optionsOf are the words and the options that a parser is given; ok is false where they
// are not known.
func (m *machine) optionsOf(args []any) (words []string, opts *object, ok bool) {
	l, isList := first(args).(*list)
	if !isList || unclear(l.items, 0) != nil {
		return nil, nil, false
	}
	for _, w := range l.items {
		words = append(words, show(w))
	}
	opts = newObject()
	if len(args) > 1 {
		switch o := args[1].(type) {
		case *object:
			opts = o
		case undef:
		default:
			return nil, nil, false
		}
	}
	return words, opts, true
}

// several are the texts of a list, or of one alone.
func several(v any) (texts []string) {
	switch v := v.(type) {
	case string:
		return []string{v}
	case *list:
		for _, x := range v.items {
			texts = append(texts, show(x))
		}
	}
	return texts
}

var numeric = regexp.MustCompile(`^(0[xX][0-9a-fA-F]+|[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[-+]?\d+)?)$`)

// minimistLine is a command line while minimist reads it.
type minimistLine struct {
	out            *object
	bools, strings map[string]bool
	aliases        map[string][]string
}

func (l *minimistLine) put(key string, v any) {
	parts := strings.Split(key, ".")
	o := within(l.out, parts[:len(parts)-1])
	last := parts[len(parts)-1]
	old, there := o.get(last)
	_, wasBool := old.(bool)
	switch before, isList := old.(*list); {
	case !there || l.bools[last] || wasBool:
		o.set(last, v)
	case isList:
		before.items = append(before.items, v)
	default:
		o.set(last, &list{items: []any{old, v}})
	}
}

func (l *minimistLine) arg(key string, v any) {
	if t, ok := v.(string); ok && !l.strings[key] && numeric.MatchString(t) {
		v, _ = toNumber(t)
	}
	l.put(key, v)
	for _, a := range l.aliases[key] {
		l.put(a, v)
	}
}

func (l *minimistLine) flag(key string) bool {
	return l.bools[key] || slices.ContainsFunc(l.aliases[key], func(a string) bool { return l.bools[a] })
}

// alone is what an option has that no value follows.
func (l *minimistLine) alone(key string) any {
	if l.strings[key] {
		return ""
	}
	return true
}

func (m *machine) minimist(given []string, opts *object) (any, error) {
	get := func(k string) any { v, _ := opts.get(k); return v }
	if get("unknown") != any(undefined) || get("stopEarly") == true {
		return nil, giveUp("options of minimist")
	}
	l := &minimistLine{newObject(), map[string]bool{}, map[string]bool{}, map[string][]string{}}
	rest := &list{}
	l.out.set("_", rest)
	everything := get("boolean") == true
	for _, k := range several(get("boolean")) {
		l.bools[k] = true
	}
	if alias, ok := get("alias").(*object); ok {
		for _, k := range alias.keys {
			all := append([]string{k}, several(alias.cells[k].v)...)
			for _, a := range all {
				l.aliases[a] = nil
				for _, b := range all {
					if a != b {
						l.aliases[a] = append(l.aliases[a], b)
					}
				}
			}
		}
	}
	for _, k := range several(get("string")) {
		l.strings[k] = true
		for _, a := range l.aliases[k] {
			l.strings[a] = true
		}
	}
	defaults, _ := get("default").(*object)
	if defaults == nil {
		defaults = newObject()
	}
	for _, k := range several(get("boolean")) {
		if v, ok := defaults.get(k); ok {
			l.arg(k, v)
		} else {
			l.arg(k, false)
		}
	}
	var after []string
	if i := slices.Index(given, "--"); i >= 0 {
		given, after = given[:i], given[i+1:]
	}
	// value is what stands behind an option, where that is no option itself.
	value := func(i int, key string) bool {
		if i+1 >= len(given) || l.flag(key) || everything && len(key) > 1 {
			return false
		}
		w := given[i+1]
		return !(len(w) > 1 && w[0] == '-' && (w[1] != '-' || len(w) > 2 && w[2] != '-'))
	}
	// option takes an option, and what stands behind it where that is its value.
	option := func(i int, key string) int {
		switch {
		case value(i, key):
			i++
			l.arg(key, given[i])
		case i+1 < len(given) && (given[i+1] == "true" || given[i+1] == "false"):
			i++
			l.arg(key, given[i] == "true")
		default:
			l.arg(key, l.alone(key))
		}
		return i
	}
	for i := 0; i < len(given); i++ {
		w := given[i]
		key, v, joined := strings.Cut(strings.TrimPrefix(w, "--"), "=")
		switch {
		case strings.HasPrefix(w, "--") && joined && key != "":
			if l.bools[key] {
				l.arg(key, v != "false")
			} else {
				l.arg(key, v)
			}
		case strings.HasPrefix(w, "--no-") && len(w) > 5:
			l.arg(w[5:], false)
		case strings.HasPrefix(w, "--") && len(w) > 2:
			i = option(i, key)
		case len(w) > 1 && w[0] == '-' && w[1] != '-':
			if l.letters(w) {
				continue
			}
			if key := w[len(w)-1:]; key != "-" {
				i = option(i, key)
			}
		default:
			var x any = w
			if !l.strings["_"] && numeric.MatchString(w) {
				x, _ = toNumber(w)
			}
			rest.items = append(rest.items, x)
		}
	}
	for _, k := range defaults.keys {
		if _, there := l.out.get(k); !there {
			if strings.Contains(k, ".") {
				return nil, giveUp("options of minimist")
			}
			l.put(k, defaults.cells[k].v)
			for _, a := range l.aliases[k] {
				l.put(a, defaults.cells[k].v)
			}
		}
	}
	for _, w := range after {
		rest.items = append(rest.items, w)
	}
	return l.out, nil
}

var shortNumber = regexp.MustCompile(`-?\d+(\.\d*)?(e-?\d+)?$`)

// letters reads the letters of a short option but the last one; it says whether the
// value of one of them ended the word.
func (l *minimistLine) letters(w string) bool {
	for j := 1; j < len(w)-1; j++ {
		key, next := w[j:j+1], w[j+1:]
		letter := key[0]|0x20 >= 'a' && key[0]|0x20 <= 'z'
		switch {
		case next == "-":
			l.arg(key, next)
		case letter && next[0] == '=':
			l.arg(key, next[1:])
			return true
		case letter && shortNumber.MatchString(next), !wordByte(next[0]):
			l.arg(key, next)
			return true
		default:
			l.arg(key, l.alone(key))
		}
	}
	return false
}

func wordByte(c byte) bool {
	return c == '_' || c >= '0' && c <= '9' || c|0x20 >= 'a' && c|0x20 <= 'z'
}

// mri reads a command line as the package of that name does.
func mri(given []string, opts *object) (any, error) {
	get := func(k string) any { v, _ := opts.get(k); return v }
	if get("unknown") != any(undefined) {
		return nil, giveUp("options of mri")
	}
	out, rest := newObject(), &list{}
	out.set("_", rest)
	alias := map[string][]string{}
	if o, ok := get("alias").(*object); ok {
		for _, k := range o.keys {
			all := append([]string{k}, several(o.cells[k].v)...)
			for _, a := range all {
				alias[a] = nil
				for _, b := range all {
					if a != b {
						alias[a] = append(alias[a], b)
					}
				}
			}
		}
	}
	kinds := map[string]string{}
	for _, kind := range []string{"boolean", "string"} {
		for _, k := range several(get(kind)) {
			for _, a := range append([]string{k}, alias[k]...) {
				kinds[a] = kind
			}
		}
	}
	defaults, _ := get("default").(*object)
	if defaults != nil {
		for _, k := range defaults.keys {
			if kind := typeName(defaults.cells[k].v); kind == "boolean" || kind == "string" {
				for _, a := range append([]string{k}, alias[k]...) {
					kinds[a] = kind
				}
			}
		}
	}
	number := func(v any) any {
		if n, ok := toNumber(v); ok && !math.IsNaN(n) && !math.IsInf(n, 0) {
			return n
		}
		return v
	}
	put := func(key string, v any) {
		text, isText := v.(string)
		switch {
		case kinds[key] == "string" && v == true:
			v = ""
		case kinds[key] == "string", !isText:
		case kinds[key] == "boolean" && (text == "true" || text == "false"):
			v = text == "true"
		case kinds[key] == "boolean":
			rest.items = append(rest.items, number(text))
			v = text != ""
		default:
			v = number(text)
		}
		switch old, there := out.get(key); {
		case !there || old == nil:
			out.set(key, v)
		default:
			if l, ok := old.(*list); ok {
				l.items = append(l.items, v)
			} else {
				out.set(key, &list{items: []any{old, v}})
			}
		}
	}
	for i := 0; i < len(given); i++ {
		w := given[i]
		if w == "--" {
			for _, x := range given[i+1:] {
				rest.items = append(rest.items, x)
			}
			break
		}
		name := strings.TrimLeft(w, "-")
		dashes := len(w) - len(name)
		if dashes == 0 {
			rest.items = append(rest.items, w)
			continue
		}
		if no, ok := strings.CutPrefix(name, "no-"); ok {
			out.set(no, false)
			continue
		}
		name, text, _ := strings.Cut(name, "=")
		var v any = text
		if text == "" {
			v = true
			if i+1 < len(given) && !strings.HasPrefix(given[i+1], "-") {
				i++
				v = given[i]
			}
		}
		names := []string{name}
		if dashes == 1 {
			names = strings.Split(name, "")
		}
		for j, n := range names {
			if j+1 < len(names) {
				put(n, true)
			} else {
				put(n, v)
			}
		}
	}
	if defaults != nil {
		for _, k := range defaults.keys {
			if _, there := out.get(k); !there {
				out.set(k, defaults.cells[k].v)
			}
		}
	}
	for _, k := range slices.Clone(out.keys) {
		for _, a := range alias[k] {
			out.set(a, out.cells[k].v)
		}
	}
	return out, nil
}

var argNumber = regexp.MustCompile(`^-?\d*(\.\d+)?$`)

// argPackage reads the command line as the package arg does.
func (m *machine) argPackage(spec *object, options any, at spot) (any, error) {
	given := m.words(2)
	permissive, positional := false, false
	if o, ok := options.(*object); ok {
		if l, _ := o.get("argv"); l != any(undefined) {
			items, ok := l.(*list)
			if !ok {
				return nil, giveUp("what arg is given")
			}
			given = items.items
		}
		v, _ := o.get("permissive")
		permissive = v == true
		v, _ = o.get("stopAtPositional")
		positional = v == true
	}
	if unclear(given, 0) != nil {
		return nil, undecided("the arguments of the command line")
	}
	out, rest := newObject(), &list{}
	out.set("_", rest)
	wrong := func(text string) (any, error) {
		return nil, certainly("ArgError", text)
	}
	for i := 0; i < len(given); i++ {
		w := show(given[i])
		if w == "--" || positional && len(rest.items) > 0 {
			if w == "--" {
				i++
			}
			rest.items = append(rest.items, given[i:]...)
			break
		}
		if len(w) < 2 || w[0] != '-' {
			rest.items = append(rest.items, w)
			continue
		}
		parts := []string{w}
		if w[1] != '-' && len(w) > 2 {
			parts = nil
			for _, c := range w[1:] {
				parts = append(parts, "-"+string(c))
			}
		}
		for j, p := range parts {
			name, text, joined := p, "", false
			if strings.HasPrefix(p, "--") {
				name, text, joined = strings.Cut(p, "=")
			}
			for n := 0; n < 8; n++ {
				if to, ok := at2([]any{cellOf(spec, name)}, 0).(string); ok {
					name = to
				}
			}
			kind := cellOf(spec, name)
			if kind == any(undefined) {
				if permissive {
					rest.items = append(rest.items, p)
					continue
				}
				return wrong("unknown or unexpected option: " + p)
			}
			several, isList := kind.(*list)
			if isList {
				kind = first(several.items)
			}
			o, _ := kind.(*opaque)
			var v any
			reads, own := kind.(*function)
			switch {
			case o != nil && o.path == "Boolean":
				v = true
			case own && len(paramsOf(reads.node.Kid(0))) > 0 && j+1 == len(parts): // it takes the value, the name and what was there before
				if !joined {
					if i+1 >= len(given) || len(show(given[i+1])) > 1 && show(given[i+1])[0] == '-' {
						return wrong("option requires argument: " + p)
					}
					text = show(given[i+1])
					i++
				}
				x, err := m.call(reads, undefined, []any{text, name, cellOf(out, name)}, nil, at)
				if err != nil {
					return nil, err
				}
				v = x
			case o == nil || o.path != "Number" && o.path != "String":
				return nil, giveUp("a kind of option that arg is given")
			default:
				if j+1 < len(parts) {
					return wrong("option requires argument: " + p)
				}
				if !joined {
					if i+1 >= len(given) {
						return wrong("option requires argument: " + p)
					}
					next := show(given[i+1])
					if len(next) > 1 && next[0] == '-' && !(o.path == "Number" && argNumber.MatchString(next)) {
						return wrong("option requires argument: " + p)
					}
					text = next
					i++
				}
				v = text
				if o.path == "Number" {
					n, ok := toNumber(text)
					if !ok {
						return nil, giveUp("a number that arg is given")
					}
					v = n
				}
			}
			if isList {
				l, _ := cellOf(out, name).(*list)
				if l == nil {
					l = &list{}
					out.set(name, l)
				}
				l.items = append(l.items, v)
			} else {
				out.set(name, v)
			}
		}
	}
	return out, nil
}

// sadeCommand is a command of sade.
type sadeCommand struct {
	usage           []string
	alias, defaults *object
	handler         any
}

// sade is the program that the package sade makes: its commands are called as they are
// when the program parses the command line.
func (m *machine) sade(name string, single bool) any {
	const every, alone = "__all__", "__defaults_"
	make := func(usage []string) *sadeCommand {
		return &sadeCommand{usage: usage, alias: newObject(), defaults: newObject()}
	}
	tree := map[string]*sadeCommand{every: make(nil)}
	now, byDefault := "", ""
	if single {
		tree[alone], now = make(strings.Fields(name)[min(1, len(strings.Fields(name))):]), alone
	}
	var o *object
	methods := map[string]func(*machine, []any, spot) (any, error){}
	for _, k := range []string{"version", "describe", "example", "alias"} {
		methods[k] = func(*machine, []any, spot) (any, error) { return o, nil }
	}
	methods["command"] = func(_ *machine, args []any, _ spot) (any, error) {
		var words, usage []string
		for _, w := range strings.Fields(show(first(args))) {
			if strings.HasPrefix(w, "<") || strings.HasPrefix(w, "[") || len(usage) > 0 {
				usage = append(usage, w)
			} else {
				words = append(words, w)
			}
		}
		now = strings.Join(words, " ")
		tree[now] = make(usage)
		if opts, ok := at2(args, 2).(*object); ok {
			if cellOf(opts, "alias") != any(undefined) {
				return nil, giveUp("another name for a command")
			}
			if cellOf(opts, "default") == true {
				byDefault = now
			}
		}
		return o, nil
	}
	methods["option"] = func(_ *machine, args []any, _ spot) (any, error) {
		c := tree[now]
		if now == "" {
			c = tree[every]
		}
		names := strings.FieldsFunc(show(first(args)), func(r rune) bool { return r == ' ' || r == ',' })
		for i, n := range names {
			names[i] = strings.TrimLeft(n, "-")
		}
		if len(names) == 0 {
			return nil, giveUp("an option without a name")
		}
		flag, short := names[0], ""
		if len(names) > 1 {
			if short = names[1]; len(short) > 1 {
				flag, short = short, flag
			}
		}
		if short != "" {
			c.alias.set(short, &list{items: []any{flag}})
		}
		if v := at2(args, 2); v != any(undefined) && len(args) > 2 {
			c.defaults.set(flag, v)
		}
		return o, nil
	}
	methods["action"] = func(_ *machine, args []any, _ spot) (any, error) {
		if c := tree[now]; c != nil {
			c.handler = first(args)
		}
		return o, nil
	}
	methods["parse"] = func(m *machine, args []any, at spot) (any, error) {
		line, _, ok := m.optionsOf(args[:min(1, len(args))])
		if !ok || len(args) > 1 || len(line) < 2 {
			return nil, giveUp("what sade is given")
		}
		line = line[2:]
		name, c := alone, tree[alone]
		if !single {
			v, err := mri(line, newObject())
			if err != nil {
				return nil, err
			}
			named := several(cellOf(v.(*object), "_"))
			name, c = "", nil
			for i := 1; i <= len(named); i++ {
				if t := strings.Join(named[:i], " "); tree[t] != nil {
					name, c = t, tree[t]
				}
			}
			switch {
			case c != nil:
				if i := slices.Index(line, strings.Fields(name)[0]); i >= 0 {
					line = slices.Delete(slices.Clone(line), i, i+len(strings.Fields(name)))
				}
			case byDefault != "":
				c = tree[byDefault]
			default:
				return nil, &exit{}
			}
		}
		opts, alias, defaults := newObject(), newObject(), newObject()
		for _, from := range []*sadeCommand{tree[every], c} {
			for _, k := range from.alias.keys {
				alias.set(k, from.alias.cells[k].v)
			}
			for _, k := range from.defaults.keys {
				defaults.set(k, from.defaults.cells[k].v)
			}
		}
		opts.set("alias", alias)
		opts.set("default", defaults)
		v, err := mri(line, opts)
		if err != nil {
			return nil, err
		}
		values := v.(*object)
		if cellOf(values, "help") == true || cellOf(values, "h") == true || cellOf(values, "version") == true {
			return nil, &exit{}
		}
		rest, _ := cellOf(values, "_").(*list)
		var given []any
		for _, u := range c.usage {
			switch {
			case len(rest.items) > 0:
				given, rest.items = append(given, rest.items[0]), rest.items[1:]
			case strings.HasPrefix(u, "<"):
				return nil, &exit{}
			default:
				given = append(given, undefined)
			}
		}
		if c.handler == nil {
			return nil, giveUp("a command without an action")
		}
		return m.call(c.handler, undefined, append(given, values), nil, at)
	}
	o = jsMethods("Sade", methods)
	return o
}

// rc puts together what the package rc does: the defaults, the file .NAMErc of the tree,
// variables NAME_…, and the command line. Files of the machine are taken not to be there.
func (m *machine) rc(name string, defaults any, at spot) (any, error) {
	out := newObject()
	switch d := defaults.(type) {
	case *object:
		deepInto(out, d, 0)
	case undef:
	default:
		return nil, giveUp("defaults of rc")
	}
	switch v := m.readFile("." + name + "rc").(type) {
	case *thrown:
	case *content:
		var read any
		var err error
		if strings.HasPrefix(strings.TrimSpace(v.text), "{") {
			read, err = m.json5(v.text)
		} else {
			return nil, giveUp("a file of settings of rc")
		}
		if err != nil {
			return nil, err
		}
		if o, ok := read.(*object); ok {
			deepInto(out, o, 0)
		}
	default:
		return nil, giveUp("a file of settings of rc")
	}
	prefix := strings.ToLower(name + "_")
	vars := newObject()
	for _, k := range m.envKeys() {
		rest, ok := strings.CutPrefix(strings.ToLower(k), prefix)
		if !ok {
			continue
		}
		parts := strings.FieldsFunc(strings.ReplaceAll(k[len(k)-len(rest):], "__", "\x00"), func(r rune) bool { return r == 0 })
		if n := len(parts) - 1; n >= 0 {
			v, _ := m.lookup(k, at)
			within(vars, parts[:n]).set(parts[n], v)
		}
	}
	deepInto(out, vars, 0)
	var words []string
	for _, w := range m.words(2) {
		if !known(w) {
			return nil, undecided("the arguments of the command line")
		}
		words = append(words, show(w))
	}
	line, err := m.minimist(words, newObject())
	if err != nil {
		return nil, err
	}
	if cellOf(line.(*object), "config") != any(undefined) || cellOf(vars, "config") != any(undefined) {
		return nil, giveUp("a file of settings of rc")
	}
	deepInto(out, line.(*object), 0)
	return out, nil
}

// deepInto puts the properties of an object into another one, objects within them too.
func deepInto(to, from *object, depth int) {
	for _, k := range from.keys {
		v := from.cells[k].v
		o, ok := v.(*object)
		if !ok || o.class != nil || depth > 40 {
			to.set(k, v)
			continue
		}
		into, ok := cellOf(to, k).(*object)
		if !ok {
			into = newObject()
			to.set(k, into)
		}
		deepInto(into, o, depth+1)
	}
}

// json5 reads JSON5 (json5.org, version 1.0.0): what differs from a flow of YAML is put
// as that has it.
func (m *machine) json5(text string) (any, error) {
	var b strings.Builder
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '"' || c == '\'':
			j := i + 1
			for j < len(text) && text[j] != c {
				if text[j] == '\\' {
					if c == '\'' {
						return nil, giveUp("a text of JSON5")
					}
					j++
				}
				j++
			}
			b.WriteString(text[i:min(j+1, len(text))])
			i = j
		case c == '/' && strings.HasPrefix(text[i:], "//"):
			end := strings.IndexByte(text[i:], '\n')
			if end < 0 {
				end = len(text) - i
			}
			i += end - 1
		case c == '/' && strings.HasPrefix(text[i:], "/*"):
			end := strings.Index(text[i+2:], "*/")
			if end < 0 {
				return nil, giveUp("a text of JSON5")
			}
			b.WriteByte(' ')
			i += end + 3
		case c == ':':
			b.WriteString(": ")
		case c == '\t':
			b.WriteByte(' ')
		default:
			b.WriteByte(c)
		}
	}
	v, err := m.parsedText(b.String(), false)
	if t, ok := err.(*thrown); ok && t != nil {
		return nil, giveUp("a text of JSON5")
	}
	return v, err
}

// freePort is the port that get-port 7 or portfinder 1.0 finds free: the first one that
// it is asked for, as nothing else listens; 0, the kernel's choice, where it is asked for
// none (get-port), or 8000 (portfinder; its source, basePort).
func (m *machine) freePort(name string, options any) (any, bool, error) {
	var v any = 0.0
	if strings.HasPrefix(name, "portfinder") {
		v = 8000.0
	}
	switch o := options.(type) {
	case undef:
	case *object:
		for _, k := range o.keys {
			if k != "port" && k != "host" {
				return nil, false, nil
			}
		}
		if given := cellOf(o, "port"); given != any(undefined) {
			v = given
		}
	default:
		return nil, false, nil
	}
	if l, ok := v.(*list); ok {
		v = first(l.items)
	}
	if !known(v) {
		return nil, false, nil
	}
	if n, ok := toNumber(v); ok {
		v = n
	}
	return &promise{v: v}, true, nil
}
