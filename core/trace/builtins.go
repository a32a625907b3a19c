package trace

import (
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"net/url"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// What the languages themselves do with texts, numbers, lists and objects
// (ECMA-262, 15th edition; Node.js 24 documentation of fs, path, url and
// process; Python 3.14 library reference, "Built-in Functions", "Built-in
// Types", os, json, pathlib).

// made is what `new` of a class of the language gives.
func (m *machine) made(f *opaque, args []any, at spot) (any, bool, error) {
	switch f.path {
	case "commander.Command":
		name := ""
		if t, ok := first(args).(string); ok {
			name = t
		}
		return m.commander(name, nil).obj, true, nil
	case "nconf.Provider":
		return m.nconfProvider(), true, nil
	case "commander.Option":
		if t, ok := first(args).(string); ok {
			return m.jsOption(t), true, nil
		}
	case "Map", "WeakMap":
		o := newObject()
		o.class = &class{name: "Map", builtin: true}
		if len(args) > 0 && args[0] != nil && args[0] != any(undefined) {
			items, err := m.items(args[0], m.topOf(at))
			if err != nil {
				return nil, true, err
			}
			for _, p := range items {
				pair, err := m.items(p, m.topOf(at))
				if err != nil || len(pair) < 2 {
					return nil, true, undecided("a map whose entries are not known")
				}
				if unclear(pair[:1], 3) != nil {
					return nil, true, undecided("a key that is not known")
				}
				o.set(keyText(pair[0]), pair[1])
			}
		}
		return o, true, nil
	case "Set", "WeakSet":
		o := newObject()
		o.class = &class{name: "Set", builtin: true}
		if len(args) > 0 && args[0] != nil && args[0] != any(undefined) {
			items, err := m.items(args[0], m.topOf(at))
			if err != nil {
				return nil, true, err
			}
			for _, x := range items {
				o.set(keyText(x), x)
			}
		}
		return o, true, nil
	case "Error", "TypeError", "RangeError", "SyntaxError", "ReferenceError", "AggregateError":
		e := madeError(f.path, show(first(args)))
		if given, ok := at2(args, 1).(*object); ok && given.cells["cause"] != nil {
			e.set("cause", given.cells["cause"].v)
		}
		return e, true, nil
	case "Promise":
		p := &promise{v: undefined}
		if fn, ok := first(args).(*function); ok {
			settled := false
			resolve := &function{native: func(m *machine, _ any, a []any, _ map[string]any, _ spot) (any, error) {
				if !settled {
					settled = true
					if q, ok := first(a).(*promise); ok {
						p.v, p.err = q.v, q.err
					} else {
						p.v = first(a)
					}
				}
				return undefined, nil
			}}
			reject := &function{native: func(m *machine, _ any, a []any, _ map[string]any, _ spot) (any, error) {
				if !settled {
					settled = true
					p.err = &thrown{first(a)}
				}
				return undefined, nil
			}}
			_, err := m.call(fn, undefined, []any{resolve, reject}, nil, at)
			if t, ok := err.(*thrown); ok {
				p.err = t
			} else if err != nil {
				return nil, true, err
			}
			for !settled && p.err == nil && len(m.later) > 0 { // it is settled later
				next := m.later[0]
				m.later = m.later[1:]
				if _, err := m.call(next.fn, undefined, next.args, nil, next.at); err != nil {
					return nil, true, err
				}
			}
			if !settled && p.err == nil {
				p.v = dontKnow("a promise")
			}
		}
		return p, true, nil
	case "URL", "url.URL":
		text, ok := first(args).(string)
		if first(args) == any(undefined) && len(args) == 1 {
			return nil, true, certainly("TypeError", "Invalid URL")
		}
		if !ok {
			return dontKnow("an address"), true, nil
		}
		if text == "" || !strings.Contains(text, ":") {
			if len(args) > 1 { // beside a file
				if base, ok := args[1].(string); ok && strings.HasPrefix(base, "file://"+root) {
					base = strings.TrimPrefix(base, "file://")
					o := newObject()
					o.set("pathname", path.Join(path.Dir(base), text))
					o.set("href", path.Join(path.Dir(base), text))
					return o, true, nil
				}
				base, isText := args[1].(string)
				if u, err := url.Parse(base); isText && err == nil && u.Host != "" {
					if v, err := u.Parse(text); err == nil {
						return m.made(f, []any{v.String()}, at)
					}
				}
				return dontKnow("an address"), true, nil
			}
			return nil, true, invalidURL(text)
		}
		u, err := url.Parse(text)
		if err != nil {
			return nil, true, invalidURL(text)
		}
		o := newObject()
		port := u.Port()
		if port == map[string]string{"http": "80", "https": "443", "ws": "80", "wss": "443", "ftp": "21"}[u.Scheme] {
			port = ""
		}
		host := u.Hostname()
		if strings.Contains(host, ":") {
			host = "[" + host + "]"
		}
		o.set("protocol", u.Scheme+":")
		o.set("hostname", host)
		o.set("port", port)
		o.set("pathname", u.Path)
		o.set("search", strings.TrimSuffix("?"+u.RawQuery, "?"))
		o.set("hash", strings.TrimSuffix("#"+u.EscapedFragment(), "#"))
		o.set("username", u.User.Username())
		password, _ := u.User.Password()
		o.set("password", password)
		o.set("searchParams", dontKnow("what an address asks for"))
		if asked, ok := searchParams(u.RawQuery); ok {
			o.set("searchParams", asked)
		}
		o.set("href", text)
		o.set("host", strings.TrimSuffix(host+":"+port, ":"))
		if o.set("origin", "null"); slices.Contains([]string{"http", "https", "ws", "wss", "ftp"}, u.Scheme) {
			o.set("origin", u.Scheme+"://"+strings.TrimSuffix(host+":"+port, ":"))
		}
		return o, true, nil
	case "Array":
		if n, ok := first(args).(float64); ok && len(args) == 1 { // so many, and nothing in them
			if n < 0 || n != math.Trunc(n) {
				return nil, true, raise("RangeError", "Invalid array length")
			}
			if n > maxItems {
				return nil, true, giveUp("a list of that length")
			}
			l := &list{items: make([]any, int(n))}
			for i := range l.items {
				l.items[i] = undefined
			}
			return l, true, nil
		}
		return &list{items: slices.Clone(args)}, true, nil
	case "URLSearchParams", "url.URLSearchParams":
		if text, ok := first(args).(string); ok || len(args) == 0 {
			if o, ok := searchParams(text); ok {
				return o, true, nil
			}
		}
		return dontKnow("what an address asks for"), true, nil
	case "Proxy":
		h, ok := at2(args, 1).(*object)
		if !ok || !known(args[0]) {
			return dontKnow("a new Proxy"), true, nil
		}
		return &proxied{args[0], h}, true, nil
	case "Date", "Function":
		return dontKnow("a new " + f.path), true, nil
	}
	return nil, false, nil
}

func (m *machine) topOf(at spot) *scope {
	if mod := m.modules[at.f.Name]; mod != nil {
		return mod.top
	}
	return m.modules[m.main.Name].top
}

// builtin calls a function of the language; done is false for any other.
// items are those of a list; none of nil.
func items(l *list) []any {
	if l == nil {
		return nil
	}
	return l.items
}

// invalidURL is the error of a text that is no address (Node.js 24 API, "URL").
func invalidURL(text string) error {
	err := raise("TypeError", "Invalid URL")
	o := err.(*thrown).v.(*object)
	o.set("code", "ERR_INVALID_URL")
	o.set("input", text)
	return err
}

// converting are functions that make a number or a text of what they are given.
var converting = words("Number String parseInt parseFloat Number.parseInt Number.parseFloat isNaN isFinite Math.max Math.min Math.floor Math.ceil Math.round Math.trunc Math.abs")

func (m *machine) builtin(f *opaque, args []any, keys map[string]any, at spot) (v any, done bool, err error) {
	switch at.f.Lang {
	case code.Python:
		return m.pyBuiltin(f, args, keys, at)
	}
	if javascript(at.f.Lang) {
		if v, done, err := m.jsSettings(f, args, at); done || err != nil {
			return v, done, err
		}
		if v, done, err := m.jsStandard(f, args, at); done || err != nil {
			return v, done, err
		}
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return undefined
	}
	text := func(i int) string { return show(arg(i)) }
	if converting[f.path] && javascript(at.f.Lang) {
		hint := "number"
		if f.path == "String" || strings.HasPrefix(f.path, "parse") {
			hint = "string"
		}
		args = slices.Clone(args)
		for i := range args {
			if args[i], err = m.jsPrimitive(args[i], hint, m.topOf(at), at.n); err != nil {
				return nil, true, err
			}
		}
	}
	for _, a := range args {
		if o, ok := a.(*opaque); ok {
			switch f.path {
			case "Number", "parseInt", "Number.parseInt", "parseFloat", "Number.parseFloat", "String", "Boolean", "isNaN", "Number.isNaN", "Number.isInteger", "Number.isFinite", "isFinite", "Number.isSafeInteger",
				"Math.max", "Math.min", "Math.floor", "Math.trunc", "Math.round", "Math.ceil", "Math.abs", "JSON.parse", "JSON.stringify", "path.join", "path.resolve", "Array.isArray":
				return dontKnow("what is made of " + o.String()), true, nil
			}
		}
	}
	if javascript(at.f.Lang) {
		if v, done, err := m.starts(f.path, args); done || err != nil {
			return v, done, err
		}
		if v, done, err := m.jsLaunches(f, args, at); done || err != nil {
			return v, true, err
		}
		if v, done, err := m.together(f.path, args); done || err != nil {
			return v, done, err
		}
	}
	num := func(i int) float64 { n, _ := toNumber(arg(i)); return n }
	switch f.path {
	case "Number":
		if len(args) == 0 {
			return 0.0, true, nil
		}
		return num(0), true, nil
	case "parseInt", "Number.parseInt":
		base := num(1)
		if math.IsNaN(base) {
			base = 0
		}
		return parseInt(text(0), int(base)), true, nil
	case "parseFloat", "Number.parseFloat":
		return parseFloat(text(0)), true, nil
	case "String":
		if len(args) == 0 {
			return "", true, nil
		}
		if _, ok := args[0].(*function); ok {
			return dontKnow("the text of a function"), true, nil
		}
		return text(0), true, nil
	case "Boolean":
		yes, _ := truth(arg(0), false)
		return yes, true, nil
	case "isNaN":
		return math.IsNaN(num(0)), true, nil
	case "Number.isNaN":
		x, ok := arg(0).(float64)
		return ok && math.IsNaN(x), true, nil
	case "Number.isInteger", "Number.isSafeInteger":
		x, ok := arg(0).(float64)
		return ok && x == math.Trunc(x) && !math.IsInf(x, 0), true, nil
	case "isFinite":
		return !math.IsNaN(num(0)) && !math.IsInf(num(0), 0), true, nil
	case "Number.isFinite":
		x, ok := arg(0).(float64)
		return ok && !math.IsNaN(x) && !math.IsInf(x, 0), true, nil
	case "Math.max", "Math.min":
		best := math.Inf(map[string]int{"Math.max": -1, "Math.min": 1}[f.path])
		for i := range args {
			x := num(i)
			if math.IsNaN(x) {
				return x, true, nil
			}
			if f.path == "Math.max" && x > best || f.path == "Math.min" && x < best {
				best = x
			}
		}
		return best, true, nil
	case "Math.floor":
		return math.Floor(num(0)), true, nil
	case "Math.trunc":
		return math.Trunc(num(0)), true, nil
	case "Math.ceil":
		return math.Ceil(num(0)), true, nil
	case "Math.round":
		return math.Floor(num(0) + 0.5), true, nil
	case "Math.abs":
		return math.Abs(num(0)), true, nil
	case "Math.sqrt":
		return math.Sqrt(num(0)), true, nil
	case "Math.cbrt":
		return math.Cbrt(num(0)), true, nil
	case "Math.sign":
		switch x := num(0); {
		case x > 0:
			return 1.0, true, nil
		case x < 0:
			return -1.0, true, nil
		default:
			return x, true, nil
		}
	case "Math.hypot":
		sum := 0.0
		for i := range args {
			sum += num(i) * num(i)
		}
		return math.Sqrt(sum), true, nil
	case "Math.pow":
		return math.Pow(num(0), num(1)), true, nil
	case "Math.log":
		return math.Log(num(0)), true, nil
	case "Math.log2":
		return math.Log2(num(0)), true, nil
	case "Math.log10":
		return math.Log10(num(0)), true, nil
	case "Math.imul":
		return float64(toInt32(num(0)) * toInt32(num(1))), true, nil
	case "Object.is":
		a, b := arg(0), arg(1)
		if x, ok := a.(float64); ok && math.IsNaN(x) {
			y, ok := b.(float64)
			return ok && math.IsNaN(y), true, nil
		}
		if x, ok := toNumber(a); ok && x == 0 {
			if y, ok := toNumber(b); ok && y == 0 && math.Signbit(x) != math.Signbit(y) {
				return false, true, nil
			}
		}
		if same, ok := equals(a, b, true); ok {
			return same, true, nil
		}
	case "Array":
		v, done, err := m.made(f, args, at)
		return v, done, err
	case "BigInt":
		if n, ok := toNumber(arg(0)); ok && n == math.Trunc(n) {
			return n, true, nil
		}
		return nil, true, raise("SyntaxError", "Cannot convert to a BigInt")
	case "String.fromCharCode", "String.fromCodePoint":
		var b strings.Builder
		for i := range args {
			b.WriteRune(rune(num(i)))
		}
		return b.String(), true, nil
	case "encodeURIComponent":
		return strings.ReplaceAll(strings.NewReplacer("%21", "!", "%27", "'", "%28", "(", "%29", ")", "%2A", "*", "%7E", "~").Replace(url.QueryEscape(text(0))), "+", "%20"), true, nil
	case "decodeURIComponent", "decodeURI":
		if t, err := url.PathUnescape(text(0)); err == nil {
			return t, true, nil
		}
		return nil, true, raise("URIError", "URI malformed")
	case "Buffer.concat", "buffer.Buffer.concat":
		l, ok := arg(0).(*list)
		t := ""
		for _, x := range items(l) {
			o, isObject := x.(*object)
			if !isObject || o.class == nil || o.class.name != "Buffer" {
				ok = false
				break
			}
			v, err := m.call(o.class.methods.cells["toString"].v, o, nil, nil, at)
			w, isText := v.(string)
			if err != nil || !isText {
				ok = false
				break
			}
			t += w
		}
		if ok && len(t) <= maxText {
			return jsBytes(t), true, m.use(len(t))
		}
		return dontKnow("bytes"), true, nil
	case "Buffer.from", "buffer.Buffer.from":
		t, ok := arg(0).(string)
		if l, isList := arg(0).(*list); isList && !ok {
			ok = true
			for _, x := range l.items {
				n, isNumber := x.(float64)
				ok = ok && isNumber && n >= 0 && n < 128
				t += string(rune(int(n)))
			}
			args = args[:1]
		}
		if !ok {
			return dontKnow("bytes"), true, nil
		}
		switch enc := strings.ToLower(text(1)); {
		case len(args) < 2 || enc == "utf8" || enc == "utf-8" || enc == "ascii" || enc == "latin1":
		case enc == "base64" || enc == "base64url":
			b, err := base64.RawStdEncoding.DecodeString(strings.TrimRight(strings.NewReplacer("-", "+", "_", "/").Replace(t), "="))
			if err != nil || !utf8.Valid(b) {
				return dontKnow("bytes"), true, nil
			}
			t = string(b)
		case enc == "hex":
			b, err := hex.DecodeString(t)
			if err != nil || !utf8.Valid(b) {
				return dontKnow("bytes"), true, nil
			}
			t = string(b)
		default:
			return dontKnow("bytes"), true, nil
		}
		return jsBytes(t), true, nil
	case "util.format":
		if t, ok := arg(0).(string); ok && unclear(args, 3) == nil {
			if s, ok := jsFormat(t, args[1:]); ok {
				return s, true, nil
			}
		}
		return dontKnow("a text that is formatted"), true, nil
	case "Array.isArray":
		_, ok := arg(0).(*list)
		return ok, true, nil
	case "Array.from":
		items, err := m.items(arg(0), m.topOf(at))
		if o, ok := arg(0).(*object); ok && err != nil {
			if n, ok := o.get("length"); ok {
				size, _ := toNumber(n)
				items, err = make([]any, int(max(0, min(size, maxItems)))), nil
				if !(size >= 0) {
					items = nil
				}
				for i := range items {
					items[i] = undefined
				}
			}
		}
		if err != nil {
			return nil, true, err
		}
		l := &list{items: slices.Clone(items)}
		if len(args) > 1 {
			for i, x := range l.items {
				if l.items[i], err = m.call(args[1], undefined, []any{x, float64(i)}, nil, at); err != nil {
					return nil, true, err
				}
			}
		}
		return l, true, nil
	case "Array.of":
		return &list{items: slices.Clone(args)}, true, nil
	case "Object.keys", "Object.values", "Object.entries", "Object.getOwnPropertyNames":
		l := &list{}
		add := func(k string, v any) {
			switch f.path {
			case "Object.values":
				l.items = append(l.items, v)
			case "Object.entries":
				l.items = append(l.items, &list{items: []any{k, v}})
			default:
				l.items = append(l.items, k)
			}
		}
		switch o := arg(0).(type) {
		case *object:
			for _, k := range jsOrder(o.keys) {
				if strings.HasPrefix(k, "#") || strings.HasPrefix(k, "\x00") {
					continue
				}
				x, err := m.read(o.cells[k])
				if err != nil {
					return nil, true, err
				}
				add(k, x)
			}
		case *envMap:
			for _, k := range m.envKeys() {
				add(k, m.env.text(k))
			}
		case *list:
			for i, x := range o.items {
				add(number(float64(i)), x)
			}
		default:
			return dontKnow("the names of what is not known"), true, nil
		}
		return l, true, nil
	case "Object.fromEntries":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		o := newObject()
		for _, p := range items {
			pair, err := m.items(p, m.topOf(at))
			if err != nil || len(pair) < 2 || !known(pair[0]) {
				return nil, true, undecided("entries that are not known")
			}
			o.set(keyText(pair[0]), pair[1])
		}
		return o, true, nil
	case "Object.assign":
		for _, from := range args[min(1, len(args)):] {
			switch o := from.(type) {
			case *object:
				for _, k := range o.keys {
					if err := m.setKey(args[0], k, o.cells[k].v, m.topOf(at), at.n); err != nil {
						return nil, true, err
					}
				}
			case *envMap:
				for _, k := range m.envKeys() {
					if err := m.setKey(args[0], k, m.env.text(k), m.topOf(at), at.n); err != nil {
						return nil, true, err
					}
				}
			case nil, undef, bool, float64:
			case string: // its letters
				for i, c := range []rune(o) {
					if err := m.setKey(args[0], strconv.Itoa(i), string(c), m.topOf(at), at.n); err != nil {
						return nil, true, err
					}
				}
			default:
				return nil, true, undecided("the properties of what is not known")
			}
		}
		return arg(0), true, nil
	case "Object.freeze":
		if o, ok := arg(0).(*object); ok {
			o.frozen = true
		}
		return arg(0), true, nil
	case "Object.seal", "Object.preventExtensions":
		return arg(0), true, nil
	case "structuredClone":
		if holdsCode(arg(0), 0) { // functions cannot be copied (HTML Standard, "StructuredSerialize")
			return nil, true, giveUp("what is copied")
		}
		return m.copied(arg(0)), true, nil
	case "Object.create":
		if arg(0) == nil {
			return newObject(), true, nil
		}
		if p, ok := arg(0).(*object); ok && (p.class == nil || !p.class.builtin) && len(args) == 1 {
			o := newObject()
			o.proto = p
			return o, true, nil
		}
		if of, ok := outsidePrototype(arg(0)); ok {
			o := newObject()
			o.outside = of
			return o, true, nil
		}
		return nil, true, giveUp("an object with a prototype")
	case "util.inherits", "inherits":
		if to, ok := arg(0).(*function); ok && to.node != nil {
			p := prototypeOf(to)
			switch from := arg(1).(type) {
			case *function:
				if from.node != nil && p != nil {
					p.proto = prototypeOf(from)
					return undefined, true, nil
				}
			case *opaque:
				if p != nil && from.path != "" {
					p.outside = from
					return undefined, true, nil
				}
			}
		}
		return nil, true, giveUp("what inherits from something")
	case "Object.defineProperty", "Reflect.defineProperty", "Object.defineProperties":
		o, ok := arg(0).(*object)
		if fn, isFn := arg(0).(*function); isFn {
			if fn.props == nil {
				fn.props = newObject()
			}
			o, ok = fn.props, true
		}
		given, isObject := arg(2).(*object)
		name := keyText(arg(1))
		if f.path == "Object.defineProperties" {
			given, isObject = arg(1).(*object)
		}
		if !ok || !isObject || !known(arg(1)) {
			return nil, true, giveUp("a property that is defined")
		}
		define := func(name string, d *object) {
			if get, ok := d.get("get"); ok {
				if fn, isFn := get.(*function); isFn {
					w := *fn
					w.getter = true
					o.set(name, &w)
					return
				}
			}
			v, _ := d.get("value")
			o.set(name, v)
		}
		if f.path != "Object.defineProperties" {
			define(name, given)
			return arg(0), true, nil
		}
		for _, k := range given.keys {
			d, ok := given.cells[k].v.(*object)
			if !ok {
				return nil, true, giveUp("a property that is defined")
			}
			define(k, d)
		}
		return arg(0), true, nil
	case "Object.setPrototypeOf", "Reflect.setPrototypeOf":
		o, ok := arg(0).(*object)
		p, isObject := arg(1).(*object)
		if of, is := outsidePrototype(arg(1)); ok && is {
			o.outside = of
			return o, true, nil
		}
		if !ok || !isObject && arg(1) != nil {
			return nil, true, giveUp("an object with a prototype")
		}
		o.proto = p
		return o, true, nil
	case "process.loadEnvFile": // it is there before, with what else is set
		return undefined, true, nil
	case "Reflect.get":
		if p, ok := arg(0).(*proxied); ok {
			v, err := m.proxyGet(p, keyText(arg(1)), m.topOf(at), at.n)
			return v, true, err
		}
		if len(args) > 2 { // getters are of what it is asked on
			if o, ok := args[0].(*object); ok && o.class != nil && !o.class.builtin {
				return nil, true, giveUp("what Reflect.get gives")
			}
		}
		v, err := m.key(arg(0), keyText(arg(1)), m.topOf(at), at.n)
		return v, true, err
	case "Reflect.set":
		return true, true, m.setKey(arg(0), keyText(arg(1)), arg(2), m.topOf(at), at.n)
	case "Reflect.ownKeys":
		return m.builtin(&opaque{path: "Object.getOwnPropertyNames"}, args, keys, at)
	case "Reflect.apply":
		l, err := m.items(arg(2), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		v, err := m.call(arg(0), arg(1), l, nil, at)
		return v, true, err
	case "Object.hasOwn", "Reflect.has":
		if p, ok := arg(0).(*proxied); ok {
			if f.path == "Object.hasOwn" {
				return nil, true, giveUp("what a proxy has itself")
			}
			v, err := m.proxyHas(p, arg(1), m.topOf(at), at.n)
			return v, true, err
		}
		yes, ok := m.contains(arg(0), arg(1), false)
		if !ok {
			return dontKnow("whether a name is there"), true, nil
		}
		return yes, true, nil
	case "js-yaml.load", "yaml.parse":
		if t, ok := arg(0).(string); ok {
			v, err := m.parsedText(t, false)
			return v, true, err
		}
		v, err := m.parsed(arg(0))
		return v, true, err
	case "toml.parse", "smol-toml.parse", "@iarna/toml.parse", "ini.parse", "json5.parse":
		v, err := m.parsed(arg(0))
		return v, true, err
	case "JSON.parse":
		if c, ok := arg(0).(*content); ok && c.text != "" && !json.Valid([]byte(c.text)) {
			return nil, true, certainly("SyntaxError", "not JSON")
		}
		if _, ok := arg(0).(string); !ok {
			if v, err := m.parsed(arg(0)); known(v) || err != nil {
				return v, true, err
			}
		}
		v, err := m.parseJSON(text(0))
		if err != nil {
			return nil, true, notJSON(err, "SyntaxError")
		}
		return v, true, nil
	case "JSON.stringify":
		if t, ok := m.jsonText(arg(0), 0); ok {
			if t == "" {
				return undefined, true, nil
			}
			return t, true, nil
		}
		return dontKnow("a text of JSON"), true, nil
	case "Promise.resolve":
		if p, ok := arg(0).(*promise); ok {
			return p, true, nil
		}
		return &promise{v: arg(0)}, true, nil
	case "Promise.reject":
		return &promise{err: &thrown{arg(0)}}, true, nil
	case "Promise.race", "Promise.any":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		for _, x := range items { // the first that is settled at once
			p, ok := x.(*promise)
			if !ok && known(x) {
				return &promise{v: x}, true, nil
			}
			if ok && (p.err != nil && f.path == "Promise.race" || p.err == nil && known(p.v)) {
				return p, true, nil
			}
		}
		return &promise{v: dontKnow("the first of several")}, true, nil
	case "Promise.all", "Promise.allSettled":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		l := &list{}
		for _, x := range items {
			w, err := awaited(x)
			if err != nil {
				return &promise{err: err.(*thrown)}, true, nil
			}
			l.items = append(l.items, w)
		}
		return &promise{v: l}, true, nil
	case "setTimeout", "setImmediate", "queueMicrotask", "process.nextTick", "timers/promises.setTimeout", "timers/promises.setImmediate":
		if fn, ok := arg(0).(*function); ok {
			rest := args[min(2, len(args)):]
			if f.path != "setTimeout" {
				rest = args[min(1, len(args)):]
			}
			m.later = append(m.later, job{fn, rest, at})
		}
		if strings.HasPrefix(f.path, "timers") {
			return &promise{v: undefined}, true, nil
		}
		return &opaque{path: "setTimeout()"}, true, nil
	case "setInterval", "clearTimeout", "clearInterval", "console.log", "console.error", "console.warn", "console.info", "console.debug", "process.emitWarning":
		return undefined, true, nil
	case "process.on", "process.once", "process.off", "process.addListener":
		if event := text(0); (event == "uncaughtException" || event == "unhandledRejection") && f.path != "process.off" {
			switch arg(1).(type) {
			case *function, *opaque:
				if m.rejects = true; event == "uncaughtException" {
					m.survives = arg(1)
				}
			}
		}
		return &opaque{path: "process"}, true, nil
	case "util.parseArgs":
		config, ok := arg(0).(*object)
		if len(args) == 0 {
			config, ok = newObject(), true
		}
		if !ok {
			return dontKnow("the arguments of the command line"), true, nil
		}
		return m.parseArgs(config)
	case "envalid.cleanEnv": // it ends the program where something is wrong
		v := m.asking().Expr(at.n, m.topOf(at).static)
		if v.Kind != value.Object {
			return nil, false, nil
		}
		o := newObject()
		for i, k := range v.Keys {
			out := v.Kids[i].Under(m.now())
			if out.Raise {
				return nil, true, &exit{}
			}
			x, err := m.fromValue(v.Kids[i], 0)
			if err != nil {
				x = dontKnow("the variable " + k)
			}
			o.set(k, x)
		}
		return o, true, nil
	case "config.has": // of the package config: whether get would find it
		if at.n.Kid(0).Is(code.Member) && len(at.n.Args()) == 1 {
			get, fn := *at.n, *at.n.Kids[0]
			fn.Name = "get"
			get.Kids = append([]*code.Node{&fn}, at.n.Kids[1:]...)
			v := m.asking().Expr(&get, m.topOf(at).static)
			o := v.Under(m.now())
			switch {
			case o.Raise, v.Kind == value.Undef:
				return false, true, nil
			case v.Kind == value.External || v.Kind == value.Unknown:
			case v.Kind == value.Object || v.Kind == value.List || o.Known():
				return true, true, nil
			}
		}
	case "util.promisify":
		fn := arg(0)
		switch fn.(type) {
		case *function, *opaque:
		default:
			return nil, false, nil
		}
		return &function{native: func(m *machine, this any, args []any, _ map[string]any, at spot) (any, error) {
			p := &promise{v: undefined}
			done := &function{native: func(_ *machine, _ any, args []any, _ map[string]any, _ spot) (any, error) {
				if e := first(args); e != nil && e != any(undefined) {
					p.err = &thrown{e}
				} else if len(args) > 1 {
					p.v = args[1]
				}
				return undefined, nil
			}}
			if _, err := m.call(fn, this, append(slices.Clone(args), done), nil, at); err != nil {
				return nil, err
			}
			return p, nil
		}}, true, nil
	case "dotenv-expand.expand", "dotenv-expand":
		if o, ok := arg(0).(*object); ok {
			return m.expandDotenv(o)
		}
	case "commander.createCommand":
		return m.commander(show(arg(0)), nil).obj, true, nil
	case "commander.createOption":
		return m.jsOption(text(0)), true, nil
	case "ajv().compile", "ajv.Ajv().compile", "ajv.default().compile":
		return m.compiled(f.recv, arg(0))
	case "ajv().validate", "ajv.Ajv().validate", "ajv.default().validate":
		fn, ok, err := m.compiled(f.recv, arg(0))
		if !ok || err != nil { // it may change what it is given
			return nil, true, giveUp("a schema")
		}
		v, err := m.call(fn, undefined, args[min(1, len(args)):], nil, at)
		return v, true, err
	case "get-port", "get-port.default", "portfinder.getPortPromise", "portfinder.getPortAsync":
		return m.freePort(f.path, arg(0))
	case "is-port-reachable", "is-port-reachable.default", "tcp-port-used.check": // nothing else listens before it
		return &promise{v: false}, true, nil
	case "detect-port", "detect-port.default", "detect-port.detect", "detect-port-alt":
		if _, ok := toNumber(arg(0)); ok && len(args) == 1 { // the port that is asked about, which is free
			return &promise{v: num(0)}, true, nil
		}
	case "get-port.portNumbers":
		return &list{items: []any{arg(0)}}, true, nil
	case "env-schema", "env-schema.envSchema", "env-schema.default":
		return m.envSchema(arg(0))
	case "fs.readdirSync", "fs.promises.readdir", "fs/promises.readdir":
		l, ok := m.folder(arg(0))
		if p, isText := arg(0).(string); !ok && isText && f.path == "fs.readdirSync" && !m.there(p, true, true) {
			if _, in := m.treePath(p); in {
				e := raise("Error", "ENOENT: no such file or directory, scandir '"+p+"'")
				e.(*thrown).v.(*object).set("code", "ENOENT")
				return nil, true, e
			}
		}
		if !ok || len(args) > 1 {
			return nil, false, nil
		}
		if f.path != "fs.readdirSync" {
			return &promise{v: l}, true, nil
		}
		return l, true, nil
	case "dotenv.config", "dotenv.configDotenv":
		return m.dotenvConfig(arg(0))
	case "dotenv-safe.config":
		return m.dotenvSafe(arg(0))
	case "@nestjs/core.NestFactory.create().get", "@nestjs/core.NestFactory.createApplicationContext().get":
		if c, ok := arg(0).(*class); ok {
			return m.nestProvider(c, at, 0)
		}
	case "dotenv-flow.config":
		return m.dotenvFlow(arg(0))
	case "process.exit", "Deno.exit":
		return nil, true, &exit{}
	case "process.cwd", "Deno.cwd":
		return path.Join(root, m.e.Dir), true, nil
	case "Deno.env.get":
		if err := m.denied("env", text(0)); err != nil {
			return nil, true, err
		}
		if v, ok := m.lookup(text(0), at); ok {
			return v, true, nil
		}
		return undefined, true, nil
	case "Deno.env.has":
		if err := m.denied("env", text(0)); err != nil {
			return nil, true, err
		}
		_, ok := m.lookup(text(0), at)
		return ok, true, nil
	case "Deno.env.toObject":
		if err := m.denied("env", ""); err != nil {
			return nil, true, err
		}
		return m.envObject(false), true, nil
	case "Deno.env.set":
		m.env.put(text(0), text(1))
		return undefined, true, nil
	case "querystring.parse", "querystring.decode", "qs.parse":
		if t, ok := arg(0).(string); ok && len(args) == 1 && !strings.Contains(t, "[") {
			o := newObject()
			for _, part := range strings.Split(t, "&") {
				k, v, _ := strings.Cut(part, "=")
				name, bad := url.QueryUnescape(k)
				text, worse := url.QueryUnescape(v)
				if bad != nil || worse != nil {
					return nil, true, giveUp("a query that is not read")
				}
				switch had, there := o.get(name); had := had.(type) {
				case *list:
					had.items = append(had.items, text)
				default:
					if there {
						o.set(name, &list{items: []any{had, text}})
					} else if name != "" {
						o.set(name, text)
					}
				}
			}
			return o, true, nil
		}
	case "path.join", "path.posix.join":
		var parts []string
		for i := range args {
			parts = append(parts, text(i))
		}
		return path.Join(parts...), true, nil
	case "path.resolve":
		p := path.Join(root, m.e.Dir)
		for i := range args {
			if strings.HasPrefix(text(i), "/") {
				p = text(i)
			} else {
				p = path.Join(p, text(i))
			}
		}
		return p, true, nil
	case "path.dirname":
		return path.Dir(text(0)), true, nil
	case "path.basename":
		return strings.TrimSuffix(path.Base(text(0)), func() string {
			if len(args) > 1 {
				return text(1)
			}
			return ""
		}()), true, nil
	case "path.extname":
		return path.Ext(text(0)), true, nil
	case "path.isAbsolute":
		return strings.HasPrefix(text(0), "/"), true, nil
	case "url.fileURLToPath":
		if o, ok := arg(0).(*object); ok {
			p, _ := o.get("pathname")
			return p, true, nil
		}
		return strings.TrimPrefix(text(0), "file://"), true, nil
	case "fs.existsSync":
		return m.there(pathText(arg(0)), true, true), true, nil
	case "fs.readFileSync", "fs.promises.readFile", "fs/promises.readFile", "Deno.readTextFileSync", "Deno.readTextFile":
		x := m.readFile(arg(0))
		if err := m.denied("read", text(0)); err != nil {
			x = err.(*thrown)
		}
		if strings.Contains(f.path, "romises") || f.path == "Deno.readTextFile" {
			if t, ok := x.(*thrown); ok {
				return &promise{err: t}, true, nil
			}
			return &promise{v: x}, true, nil
		}
		if t, ok := x.(*thrown); ok {
			return nil, true, t
		}
		return x, true, nil
	case "fastify-plugin", "fastify-plugin.fastifyPlugin":
		return arg(0), true, nil
	case "Symbol.for":
		return mark{"for " + text(0)}, true, nil
	case "Symbol":
		m.marks++
		return mark{strconv.Itoa(m.marks) + " " + text(0)}, true, nil
	case "os.cpus": // how many there are decides how many processes there are, and not more
		return &list{items: []any{dontKnow("a processor"), dontKnow("a processor")}}, true, nil
	case "os.availableParallelism":
		return 2.0, true, nil
	case "cluster.fork":
		if extra, ok := arg(0).(*object); ok { // with variables of its own
			env := m.envObject(false)
			for _, k := range extra.keys {
				env.set(k, extra.cells[k].v)
			}
			was, before := m.set, len(m.calls)
			m.set.Worker = true
			err := m.child(root+"/"+m.main.Name, m.words(2), env, undefined, false)
			m.set = was
			m.shared(before)
			return &opaque{path: "cluster.fork()", fresh: true}, true, err
		}
		m.forks = true
		return &opaque{path: "cluster.fork()", fresh: true}, true, nil
	case "Error", "TypeError", "RangeError":
		return madeError(f.path, text(0)), true, nil
	case "import.meta.resolve":
		return dontKnow("a module's place"), true, nil
	}
	if strings.HasPrefix(f.path, "super.") {
		return undefined, true, nil
	}
	return nil, false, nil
}

// pathText is a path: a text, or an address of a file.
func pathText(v any) string {
	switch v := v.(type) {
	case string:
		return strings.TrimPrefix(v, "file://")
	case pyPath:
		return string(v)
	case *object:
		if p, ok := v.get("pathname"); ok {
			return show(p)
		}
	}
	return "/"
}

// content is what a file of the tree holds, before it is taken apart.
type content struct {
	data *value.Value // nil: it is no data
	text string
}

// readFile gives what stands in a file of data of the tree, an error where there
// is none.
func (m *machine) readFile(name any) any {
	if o, ok := name.(*opaque); ok {
		return dontKnow("a file: " + o.String())
	}
	p, ok := m.treePath(pathText(name))
	if !ok {
		return dontKnow("a file outside of the tree")
	}
	text, ok := m.e.Loader.Text(p)
	if d := m.e.Loader.Data(p); d != nil {
		return &content{value.FromDocument(d), text}
	} else if ok {
		return &content{nil, text}
	}
	if !m.has(p) {
		t := raise("FileNotFoundError", p).(*thrown)
		if javascript(m.main.Lang) { // documentation of Node.js 24, "Common system errors"
			t = raise("Error", "ENOENT: no such file or directory, open '"+p+"'").(*thrown)
			t.v.(*object).set("code", "ENOENT")
		}
		return t
	}
	return dontKnow("what is in " + p)
}

// dotenvConfig sets what stands in dotenv files, and gives it (documentation of
// dotenv 17, "config"): the first that names a variable counts, with override the
// last.
func (m *machine) dotenvConfig(options any) (any, bool, error) {
	names, over := []any{".env"}, false
	if o, ok := options.(*object); ok {
		if v, ok := o.get("override"); ok {
			over = v == true
		}
		if v, ok := o.get("path"); ok && v != undefined {
			if l, ok := v.(*list); ok {
				names = l.items
			} else {
				names = []any{v}
			}
		}
		if _, ok := o.get("processEnv"); ok {
			return nil, false, nil
		}
	} else if options != undefined && options != nil {
		return nil, false, nil
	}
	all, out := newObject(), newObject()
	for _, name := range names {
		d, there, err := m.dotenvFile(name)
		if err != nil {
			return nil, true, err
		}
		if !there {
			out.set("error", raise("Error", "no such file").(*thrown).v)
		}
		for _, k := range d.keys {
			if all.cells[k] == nil || over {
				all.set(k, d.cells[k].v)
			}
		}
	}
	m.env.fill(all, over)
	out.set("parsed", all)
	return out, true, nil
}

// dotenvSafe reads a dotenv file, and throws where a variable of the example is not set
// then (dotenv-safe 9, "Usage").
func (m *machine) dotenvSafe(options any) (any, bool, error) {
	back, ok, err := m.dotenvConfig(options)
	if !ok || err != nil {
		return back, ok, err
	}
	o, _ := options.(*object)
	option := func(name string) any {
		if o != nil {
			if v, ok := o.get(name); ok && v != any(undefined) {
				return v
			}
		}
		return nil
	}
	var example any = ".env.example"
	for _, name := range []string{"sample", "example"} {
		if v := option(name); v != nil {
			example = v
		}
	}
	d, there, err := m.dotenvFile(example)
	if err != nil {
		return nil, true, err
	}
	if !there {
		return nil, true, raise("Error", "ENOENT: no such file or directory, open '"+show(example)+"'")
	}
	for _, k := range d.keys {
		if v, set := m.env.get(k); !set || v == "" && option("allowEmptyValues") != true {
			return nil, true, raise("MissingEnvVarsError", "the variable "+k+" of the example is not set")
		}
	}
	return back, true, nil
}

// dotenvFlow reads the dotenv files of an environment, one over the other (dotenv-flow 4,
// "Files priority").
func (m *machine) dotenvFlow(options any) (any, bool, error) {
	dir, mode := "", m.env.text("NODE_ENV")
	if o, ok := options.(*object); ok {
		for _, k := range o.keys {
			t, isText := o.cells[k].v.(string)
			switch {
			case k == "silent" || k == "debug":
			case !isText:
				return nil, false, nil
			case k == "path":
				dir = t + "/"
			case k == "node_env":
				mode = t
			case k == "default_node_env" && mode == "":
				mode = t
			case k != "default_node_env" && k != "encoding":
				return nil, false, nil
			}
		}
	} else if options != undefined && options != nil {
		return nil, false, nil
	}
	names := []string{".env.defaults", ".env", ".env.local"}
	if mode == "test" {
		names = names[:2]
	}
	if mode != "" {
		names = append(names, ".env."+mode, ".env."+mode+".local")
	}
	all, out := newObject(), newObject()
	for _, name := range names {
		d, _, err := m.dotenvFile(dir + name)
		if err != nil {
			return nil, true, err
		}
		for _, k := range d.keys {
			all.set(k, d.cells[k].v)
		}
	}
	m.env.fill(all, false)
	out.set("parsed", all)
	return out, true, nil
}

// expandDotenv puts variables into what was read from dotenv files (documentation of
// dotenv-expand 11: what the environment had before stays as it is).
func (m *machine) expandDotenv(config *object) (any, bool, error) {
	v, _ := config.get("parsed")
	parsed, ok := v.(*object)
	if !ok {
		return config, true, nil
	}
	for _, k := range parsed.keys {
		text, ok := parsed.cells[k].v.(string)
		if !ok {
			return nil, false, nil
		}
		if now, set := m.env.get(k); set && now != "" && now != text {
			parsed.cells[k].v = now
			continue
		}
		asked := 0
		parsed.cells[k].v = expandText(text, func(name string) (string, bool) {
			if asked++; asked > 500 { // one that holds itself
				return "", false
			}
			if v, ok := m.env.get(name); ok {
				return v, true
			}
			if c := parsed.cells[name]; c != nil && name != k {
				return show(c.v), true
			}
			return "", false
		}, 0)
		m.env.put(k, show(parsed.cells[k].v))
	}
	return config, true, nil
}

// expandText puts $NAME, ${NAME} and ${NAME:-else} into a text.
func expandText(text string, get func(string) (string, bool), depth int) string {
	var b strings.Builder
	for i := 0; i < len(text); i++ {
		if text[i] == '\\' && i+1 < len(text) && text[i+1] == '$' {
			b.WriteByte('$')
			i++
			continue
		}
		if text[i] != '$' || depth > 8 || b.Len() > maxText {
			b.WriteByte(text[i])
			continue
		}
		rest := text[i+1:]
		name, after := "", ""
		if inner, ok := strings.CutPrefix(rest, "{"); ok {
			end := strings.IndexByte(inner, '}')
			if end < 0 {
				b.WriteByte('$')
				continue
			}
			name, i = inner[:end], i+end+2
			name, after, _ = strings.Cut(name, "-")
			name = strings.TrimSuffix(name, ":")
		} else {
			end := 0
			for end < len(rest) && (rest[end] == '_' || rest[end] >= 'a' && rest[end] <= 'z' || rest[end] >= 'A' && rest[end] <= 'Z' || end > 0 && rest[end] >= '0' && rest[end] <= '9') {
				end++
			}
			if end == 0 {
				b.WriteByte('$')
				continue
			}
			name, i = rest[:end], i+end
		}
		v, ok := get(name)
		if !ok || v == "" {
			v = after
		}
		b.WriteString(expandText(v, get, depth+1))
	}
	return b.String()
}

// dotenvFile is what stands in a dotenv file that ships; there is false where
// there is none.
func (m *machine) dotenvFile(name any) (d *object, there bool, err error) {
	d = newObject()
	d.dict = true
	if o, ok := name.(*opaque); ok {
		return nil, false, undecided("the dotenv file %s", o)
	}
	p, ok := m.treePath(pathText(name))
	if !ok {
		return d, false, nil
	}
	data := m.e.Loader.Data(p)
	if data == nil {
		if base := path.Base(p); strings.HasPrefix(base, ".env") || strings.HasSuffix(base, ".env") {
			return d, false, nil
		}
		if _, ok := m.e.Loader.Text(p); ok {
			return nil, false, giveUp("a dotenv file")
		}
		return d, false, nil
	}
	v := value.FromDocument(data)
	if v.Kind != value.Object {
		return nil, false, giveUp("a dotenv file")
	}
	for i, k := range v.Keys {
		t, err := m.fromValue(v.Kids[i], 0)
		if err != nil {
			return nil, false, err
		}
		d.set(k, t)
	}
	return d, true, nil
}

// pyFindDotenv is the path of the nearest file of a name from the folder of a file of the
// program upwards, or empty (python-dotenv 1.0, find_dotenv).
func (m *machine) pyFindDotenv(name any, file string) (string, error) {
	if o, ok := name.(*opaque); ok {
		return "", undecided("the dotenv file %s", o)
	}
	for d := source.Dir(file); ; d = source.Dir(d) {
		if p := path.Join(d, pathText(name)); m.has(p) {
			return root + "/" + p, nil
		} else if d == source.Dir(d) {
			return "", nil
		}
	}
}

// decoupled is what python-decouple gives for a name: the environment, then
// settings.ini or .env, then the default, converted (its README, "How does it work?").
func (m *machine) decoupled(args []any, keys map[string]any, at spot) (any, bool, error) {
	name, ok := first(args).(string)
	if !ok {
		return nil, false, nil
	}
	given := func(i int, key string) (any, bool) {
		if i < len(args) {
			return args[i], true
		}
		v, ok := keys[key]
		return v, ok
	}
	v, found := any(nil), false
	if t, ok := m.lookup(name, at); ok {
		v, found = t, true
	}
	if d := m.e.Loader.Data(path.Join(m.e.Dir, "settings.ini")).Get("settings", name); d != nil && !found {
		v, found = d.Text, true
	}
	if !found {
		d, _, err := m.dotenvFile(".env")
		if err != nil {
			return nil, true, err
		}
		if x, ok := d.get(name); ok {
			v, found = x, true
		}
	}
	if !found {
		if v, found = given(1, "default"); !found {
			return nil, true, raise("UndefinedValueError", name+" not found. Declare it as envvar or define a default value.")
		}
	}
	cast, has := given(2, "cast")
	if !has {
		return v, true, nil
	}
	if o, ok := cast.(*opaque); ok {
		switch o.path {
		case "bool":
			if b, ok := v.(bool); ok {
				return b, true, nil
			}
			switch strings.ToLower(pyShow(v)) {
			case "y", "yes", "t", "true", "on", "1":
				return true, true, nil
			case "n", "no", "f", "false", "off", "0":
				return false, true, nil
			}
			return nil, true, raise("ValueError", "Invalid truth value: "+pyShow(v))
		case "decouple.Csv()":
			if len(o.args)+len(o.keys) > 0 {
				return nil, false, nil
			}
			l := &list{}
			for _, p := range strings.Split(pyShow(v), ",") {
				if p = strings.TrimSpace(p); p != "" {
					l.items = append(l.items, p)
				}
			}
			return l, true, nil
		case "int", "float", "str":
		default:
			return nil, false, nil
		}
	}
	v, err := m.call(cast, undefined, []any{v}, nil, at)
	return v, true, err
}

// starletteConfig is a setting of starlette.config.Config: the environment, then its
// file, then the default, converted (Starlette 0.4x, "Configuration").
func (m *machine) starletteConfig(of *opaque, args []any, keys map[string]any, at spot) (any, bool, error) {
	name, ok := first(args).(string)
	made := of
	if !ok || made == nil {
		return nil, false, nil
	}
	if _, own := made.keys["environ"]; own || len(made.args) > 1 {
		return nil, false, nil
	}
	if p, ok := made.keys["env_prefix"].(string); ok {
		name = p + name
	}
	given := func(i int, key string) (any, bool) {
		if i < len(args) {
			return args[i], true
		}
		v, ok := keys[key]
		return v, ok
	}
	var v any
	found := false
	if t, ok := m.lookup(name, at); ok {
		v, found = t, true
	}
	file := first(made.args)
	if k, ok := made.keys["env_file"]; ok {
		file = k
	}
	if file != nil && file != any(undefined) && !found {
		p, inTree := m.treePath(pathText(file))
		text, there := m.e.Loader.Text(p)
		if inTree && there {
			for row := range strings.SplitSeq(text, "\n") {
				row = strings.TrimSpace(row)
				k, x, has := strings.Cut(row, "=")
				if has && !strings.HasPrefix(row, "#") && strings.TrimSpace(k) == name {
					v, found = strings.Trim(strings.TrimSpace(x), "\"'"), true
				}
			}
		}
	}
	if !found {
		if v, found = given(2, "default"); !found {
			return nil, true, raise("KeyError", "Config '"+name+"' is missing, and has no default.")
		}
	}
	cast, has := given(1, "cast")
	if !has || cast == nil || v == nil {
		return v, true, nil
	}
	if o, ok := cast.(*opaque); ok && o.path == "bool" {
		if t, isText := v.(string); isText {
			switch strings.ToLower(t) {
			case "true", "1":
				return true, true, nil
			case "false", "0":
				return false, true, nil
			}
			return nil, true, raise("ValueError", "Config '"+name+"' has value '"+t+"'. Not a valid bool.")
		}
	}
	x, err := m.call(cast, undefined, []any{v}, nil, at)
	if t, ok := err.(*thrown); ok && t != nil {
		err = raise("ValueError", "Config '"+name+"' is not as it should be.")
	}
	return x, true, err
}

// folder lists what ships in a folder of the tree, by name; ok is false where it is
// not told, or nothing is there.
func (m *machine) folder(name any) (*list, bool) {
	if _, ok := name.(*opaque); ok {
		return nil, false
	}
	dir, ok := m.treePath(pathText(name))
	if !ok {
		return nil, false
	}
	lists, ok := m.e.Loader.(interface{ Listed(dir string) []string })
	if !ok {
		return nil, false
	}
	l := &list{}
	for _, name := range lists.Listed(dir) {
		l.items = append(l.items, name)
	}
	return l, len(l.items) > 0 && len(l.items) < maxItems && m.use(len(l.items)) == nil
}

// denied is the error of what the runtime does not grant (Deno 2.9).
func (m *machine) denied(kind, what string) error {
	if m.e.Denied == nil || !m.e.Denied(kind, what) {
		return nil
	}
	return raise("NotCapable", fmt.Sprintf("Requires %s access to %q, run again with the --allow-%s flag", kind, what, kind))
}

// parsed is what a reader of data makes of what a file holds.
func (m *machine) parsed(v any) (any, error) {
	switch v := v.(type) {
	case *content:
		if v.data == nil {
			return m.parsed(v.text)
		}
		x, err := m.fromValue(v.data, 0)
		if err != nil {
			return nil, err
		}
		return m.fitted(x), nil
	case *promise:
		if v.err != nil {
			return nil, v.err
		}
		return m.parsed(v.v)
	case string:
		x, err := m.parseJSON(v)
		if err != nil {
			return nil, notJSON(err, "JSONDecodeError")
		}
		return x, nil
	}
	return dontKnow("data that is not known"), nil
}

// parsedText is what a reader of YAML or of TOML makes of a text.
func (m *machine) parsedText(text string, toml bool) (any, error) {
	if err := m.use(len(text) * 8); err != nil {
		return nil, err
	}
	lines := place.NewLines([]byte(text))
	docs, err := []*document.Node(nil), error(nil)
	if toml {
		d, problem := document.TOML("", []byte(text), lines)
		docs, err = []*document.Node{d}, problem
	} else {
		docs, err = document.YAML("", []byte(text), lines)
	}
	if err != nil {
		return nil, raise("DecodeError", "a text that is not what it is read as")
	}
	if len(docs) == 0 {
		return nil, nil
	}
	x, err := m.fromValue(value.FromDocument(docs[0]), 0)
	if err != nil {
		return nil, err
	}
	return m.fitted(x), nil
}

// fitted makes data that was read what the language has.
func (m *machine) fitted(v any) any {
	if javascript(m.main.Lang) {
		return v
	}
	switch v := v.(type) {
	case float64:
		if v == math.Trunc(v) && math.Abs(v) < 1<<53 {
			return integer(v)
		}
	case *list:
		for i, x := range v.items {
			v.items[i] = m.fitted(x)
		}
	case *object:
		v.dict = true
		for _, k := range v.keys {
			v.cells[k].v = m.fitted(v.cells[k].v)
		}
	case undef:
		return nil
	}
	return v
}

func (m *machine) parseJSON(s string) (any, error) {
	d := json.NewDecoder(strings.NewReader(s))
	depth := 0
	var read func() (any, error)
	read = func() (any, error) {
		t, err := d.Token()
		if err != nil {
			return nil, err
		}
		if depth++; depth > 200 {
			return nil, spent("data that is nested too deep")
		}
		defer func() { depth-- }()
		switch t := t.(type) {
		case json.Delim:
			if t == '[' {
				l := &list{}
				for d.More() && len(l.items) < maxItems {
					x, err := read()
					if err != nil {
						return nil, err
					}
					l.items = append(l.items, x)
				}
				_, err = d.Token()
				return l, err
			}
			o := newObject()
			for d.More() && len(o.keys) < maxItems {
				k, err := d.Token()
				if err != nil {
					return nil, err
				}
				x, err := read()
				if err != nil {
					return nil, err
				}
				o.set(k.(string), x)
			}
			_, err = d.Token()
			return o, err
		case float64, string, bool, nil:
			return t, nil
		}
		return nil, giveUp("JSON")
	}
	if err := m.use(len(s) * 8); err != nil {
		return nil, err
	}
	v, err := read()
	if err != nil {
		return nil, err
	}
	if _, err := d.Token(); err != io.EOF {
		return nil, errors.New("more than JSON")
	}
	return m.fitted(v), nil
}

// notJSON is the error of a program for a text that is no JSON; a limit that was reached
// is none.
func notJSON(err error, class string) error {
	if s, stopped := err.(*stop); stopped {
		return s
	}
	return raise(class, "not JSON")
}

// parseFloat is parseFloat of JavaScript.
func parseFloat(s string) float64 {
	s = strings.TrimSpace(s)
	end := 0
	for end < len(s) && strings.IndexByte("+-.0123456789eE", s[end]) >= 0 {
		end++
	}
	for ; end > 0; end-- {
		if x, err := strconv.ParseFloat(s[:end], 64); err == nil {
			return x
		}
	}
	return math.NaN()
}

// parseInt is parseInt of JavaScript.
func parseInt(s string, base int) float64 {
	s = strings.TrimSpace(s)
	sign := 1.0
	if s != "" && (s[0] == '-' || s[0] == '+') {
		if s[0] == '-' {
			sign = -1
		}
		s = s[1:]
	}
	if len(s) > 1 && s[0] == '0' && (s[1] == 'x' || s[1] == 'X') && (base == 0 || base == 16) {
		s, base = s[2:], 16
	}
	if base == 0 {
		base = 10
	}
	if base < 2 || base > 36 {
		return math.NaN()
	}
	n, some := 0.0, false
	for _, c := range strings.ToLower(s) {
		d := strings.IndexRune("0123456789abcdefghijklmnopqrstuvwxyz", c)
		if d < 0 || d >= base {
			break
		}
		n, some = n*float64(base)+float64(d), true
	}
	if !some {
		return math.NaN()
	}
	return sign * n
}
