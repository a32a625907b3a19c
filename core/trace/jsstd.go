package trace

import (
	"crypto/hmac"
	"crypto/md5"
	"crypto/sha1"
	"crypto/sha256"
	"crypto/sha512"
	"encoding/base64"
	"encoding/hex"
	"hash"
	"math"
	"net/url"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
)

// fixedNames are constants of the languages' libraries (ECMA-262 2026, "Math", "Number";
// Node.js 24 API, "os", "path"; Python 3.14, "math", "string", "os").
var fixedNames = map[code.Language]map[string]any{
	code.JavaScript: {
		"Math.PI": math.Pi, "Math.E": math.E, "Math.LN2": math.Ln2, "Math.LN10": math.Ln10, "Math.LOG2E": math.Log2E, "Math.LOG10E": math.Log10E, "Math.SQRT2": math.Sqrt2, "Math.SQRT1_2": math.Sqrt2 / 2,
		"Number.EPSILON": 0x1p-52, "Number.MAX_VALUE": math.MaxFloat64, "Number.POSITIVE_INFINITY": math.Inf(1), "Number.NEGATIVE_INFINITY": math.Inf(-1), "Number.NaN": math.NaN(), "Number.MIN_SAFE_INTEGER": -float64(1<<53 - 1), "Infinity": math.Inf(1),
		"os.EOL": "\n", "path.delimiter": ":", "path.posix.sep": "/", "os.devNull": "/dev/null",
	},
	code.Python: {
		"math.pi": math.Pi, "math.e": math.E, "math.tau": 2 * math.Pi, "math.inf": math.Inf(1), "math.nan": math.NaN(),
		"string.ascii_lowercase": lowercase, "string.ascii_uppercase": uppercase, "string.ascii_letters": lowercase + uppercase, "string.digits": "0123456789", "string.hexdigits": "0123456789abcdefABCDEF", "string.octdigits": "01234567", "string.punctuation": "!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~", "string.whitespace": " \t\n\r\x0b\x0c",
		"os.linesep": "\n", "os.pathsep": ":", "os.name": "posix", "os.curdir": ".", "os.pardir": "..", "os.path.sep": "/", "os.extsep": ".", "os.devnull": "/dev/null", "sys.maxsize": integer(math.MaxInt64),
	},
}

const lowercase, uppercase = "abcdefghijklmnopqrstuvwxyz", "ABCDEFGHIJKLMNOPQRSTUVWXYZ"

// jsMath are functions of one number (ECMA-262 2026, "Function Properties of the Math
// Object").
var jsMath = map[string]func(float64) float64{
	"Math.sin": math.Sin, "Math.cos": math.Cos, "Math.tan": math.Tan, "Math.asin": math.Asin, "Math.acos": math.Acos, "Math.atan": math.Atan, "Math.exp": math.Exp, "Math.expm1": math.Expm1, "Math.log1p": math.Log1p, "Math.sinh": math.Sinh, "Math.cosh": math.Cosh, "Math.tanh": math.Tanh,
	"Math.fround": func(x float64) float64 { return float64(float32(x)) },
	"Math.clz32": func(x float64) float64 {
		n := 0
		for u := uint32(int64(x)); n < 32 && u&(1<<31) == 0; n++ {
			u <<= 1
		}
		return float64(n)
	},
}

// digests are the hash functions by their names (Node.js 24 API, "crypto"; Python 3.14,
// "hashlib"; OpenSSL 3, EVP_MD).
var digests = map[string]func() hash.Hash{"md5": md5.New, "sha1": sha1.New, "sha224": sha256.New224, "sha256": sha256.New, "sha384": sha512.New384, "sha512": sha512.New}

// jsStandard calls functions of the language's and of Node.js's library; done is false
// for any other.
func (m *machine) jsStandard(f *opaque, args []any, at spot) (v any, done bool, err error) {
	arg := func(i int) any { return at2(args, i) }
	text := func(i int) string { return show(arg(i)) }
	if fn := jsMath[f.path]; fn != nil && len(args) > 0 && known(args[0]) {
		n, _ := toNumber(args[0])
		return fn(n), true, nil
	}
	if rest, ok := strings.CutPrefix(f.path, "assert"); ok {
		return m.jsAssert(strings.TrimPrefix(rest, "/strict"), args, at)
	}
	if lacking(f.path, args) {
		return nil, true, certainly("TypeError", "what "+f.path+" is given is "+show(first(args)))
	}
	if opaqueAmong(args) != nil {
		return nil, false, nil
	}
	switch f.path {
	case "Math.atan2":
		x, _ := toNumber(arg(0))
		y, _ := toNumber(arg(1))
		return math.Atan2(x, y), true, nil
	case "Number.isSafeInteger":
		x, ok := arg(0).(float64)
		return ok && x == math.Trunc(x) && math.Abs(x) <= 1<<53-1, true, nil
	case "JSON.stringify":
		return m.jsStringify(args, at)
	case "JSON.parse":
		fn, ok := arg(1).(*function)
		if !ok {
			return nil, false, nil
		}
		v, done, err := m.builtin(f, args[:1], nil, at)
		if err != nil || !done || !known(v) {
			return v, done, err
		}
		v, err = m.jsRevive(fn, "", v, at, 0)
		return v, true, err
	case "Object.isFrozen":
		if o, ok := arg(0).(*object); ok {
			return o.frozen, true, nil
		}
	case "Object.prototype.toString.call":
		kind := map[bool]string{true: "Object"}[true]
		switch arg(0).(type) {
		case nil:
			kind = "Null"
		case undef:
			kind = "Undefined"
		case *list:
			kind = "Array"
		case string:
			kind = "String"
		case float64:
			kind = "Number"
		case bool:
			kind = "Boolean"
		case *function:
			kind = "Function"
		case *object:
		default:
			return nil, false, nil
		}
		return "[object " + kind + "]", true, nil
	case "escape":
		return url.PathEscape(text(0)), true, nil
	case "encodeURI":
		var b strings.Builder
		for _, r := range text(0) {
			if strings.ContainsRune(";/?:@&=+$,#-_.!~*'()"+lowercase+uppercase+"0123456789", r) {
				b.WriteRune(r)
			} else {
				b.WriteString(strings.ReplaceAll(url.QueryEscape(string(r)), "+", "%20"))
			}
		}
		return b.String(), true, nil
	case "btoa":
		return base64.StdEncoding.EncodeToString([]byte(text(0))), true, nil
	case "atob":
		b, err := base64.StdEncoding.DecodeString(text(0))
		if err != nil {
			return nil, true, raise("InvalidCharacterError", "The string to be decoded is not correctly encoded.")
		}
		return string(b), true, nil
	case "Buffer.byteLength", "buffer.Buffer.byteLength":
		if t, ok := arg(0).(string); ok {
			return float64(len(t)), true, nil
		}
	case "URL.canParse":
		_, _, err := m.made(&opaque{path: "URL"}, args, at)
		return err == nil, true, nil
	case "Buffer.isBuffer":
		return false, true, nil
	case "path.relative", "path.posix.relative":
		return relativePath(text(0), text(1)), true, nil
	case "path.normalize", "path.posix.normalize":
		p := path.Clean(text(0))
		if strings.HasSuffix(text(0), "/") && p != "/" {
			p += "/"
		}
		return p, true, nil
	case "path.parse", "path.posix.parse":
		p := text(0)
		o := newObject()
		base, ext := path.Base(p), path.Ext(path.Base(p))
		if strings.LastIndexByte(base, '.') <= 0 {
			ext = ""
		}
		dir := ""
		if i := strings.LastIndexByte(p, '/'); i >= 0 {
			dir = p[:max(i, 1)]
		}
		rootOf := ""
		if strings.HasPrefix(p, "/") {
			rootOf = "/"
		}
		o.set("root", rootOf)
		o.set("dir", dir)
		o.set("base", base)
		o.set("ext", ext)
		o.set("name", strings.TrimSuffix(base, ext))
		return o, true, nil
	case "path.format", "path.posix.format":
		o, ok := arg(0).(*object)
		if !ok {
			return nil, false, nil
		}
		part := func(k string) string {
			v, _ := o.get(k)
			if s, ok := v.(string); ok {
				return s
			}
			return ""
		}
		base := part("base")
		if base == "" {
			base = part("name") + part("ext")
		}
		if dir := firstOf(part("dir"), part("root")); dir != "" {
			return strings.TrimSuffix(dir, "/") + "/" + base, true, nil
		}
		return base, true, nil
	case "path.posix.dirname", "path.posix.basename", "path.posix.extname", "path.posix.resolve", "path.posix.isAbsolute":
		return m.builtin(&opaque{path: strings.Replace(f.path, ".posix", "", 1)}, args, nil, at)
	case "os.platform", "os.type":
		return map[string]string{"os.platform": "linux", "os.type": "Linux"}[f.path], true, nil
	case "os.tmpdir":
		if v, ok := m.lookup("TMPDIR", at); ok {
			return v, true, nil
		}
		return "/tmp", true, nil
	case "querystring.stringify", "querystring.encode", "qs.stringify":
		o, ok := arg(0).(*object)
		if !ok || len(args) > 1 {
			return nil, false, nil
		}
		var parts []string
		for _, k := range o.keys {
			items := []any{o.cells[k].v}
			if l, ok := o.cells[k].v.(*list); ok {
				items = l.items
			}
			for _, x := range items {
				parts = append(parts, strings.ReplaceAll(url.QueryEscape(k)+"="+url.QueryEscape(show(x)), "+", "%20"))
			}
		}
		return strings.Join(parts, "&"), true, nil
	case "crypto.createHash", "crypto.createHmac":
		name, ok := arg(0).(string)
		make := digests[strings.ReplaceAll(strings.ToLower(name), "-", "")]
		if !ok || make == nil {
			return nil, false, nil
		}
		h := make()
		if f.path == "crypto.createHmac" {
			key, ok := arg(1).(string)
			if !ok {
				return nil, false, nil
			}
			h = hmac.New(make, []byte(key))
		}
		return m.jsHash(h), true, nil
	case "crypto.hash":
		name, _ := arg(0).(string)
		t, ok := arg(1).(string)
		if make := digests[strings.ReplaceAll(strings.ToLower(name), "-", "")]; make != nil && ok {
			h := make()
			h.Write([]byte(t))
			return jsDigest(h.Sum(nil), text(2)), true, nil
		}
	case "util.isDeepStrictEqual":
		if same, ok := equalJSON(m, arg(0), arg(1)); ok {
			return same, true, nil
		}
	}
	return nil, false, nil
}

// equalJSON compares what two values are as text of JSON.
func equalJSON(m *machine, a, b any) (same, ok bool) {
	x, ok1 := m.jsonText(a, 0)
	y, ok2 := m.jsonText(b, 0)
	return x == y, ok1 && ok2
}

// relativePath is the way from one folder to another.
func relativePath(from, to string) string {
	abs := func(p string) []string {
		if !strings.HasPrefix(p, "/") {
			p = root + "/" + p
		}
		return strings.Split(strings.Trim(path.Clean(p), "/"), "/")
	}
	a, b := abs(from), abs(to)
	n := 0
	for n < len(a) && n < len(b) && a[n] == b[n] {
		n++
	}
	var parts []string
	for range len(a) - n {
		if a[len(a)-1] != "" {
			parts = append(parts, "..")
		}
	}
	return strings.Join(append(parts, b[n:]...), "/")
}

// jsHash is what makes a digest (Node.js 24 API, "crypto", Class: Hash).
func (m *machine) jsHash(h hash.Hash) *object {
	var o *object
	o = jsMethods("Hash", map[string]func(*machine, []any, spot) (any, error){
		"update": func(m *machine, args []any, _ spot) (any, error) {
			t, ok := first(args).(string)
			if b, isObject := first(args).(*object); isObject && b.class != nil && b.class.name == "Buffer" {
				if v, err := m.call(b.cells["toString"].v, b, nil, nil, spot{m.main, m.main.Body}); err == nil {
					t, ok = v.(string)
				}
			}
			if !ok {
				return dontKnow("what is hashed"), nil
			}
			h.Write([]byte(t))
			return o, m.use(len(t))
		},
		"digest": func(_ *machine, args []any, _ spot) (any, error) {
			return jsDigest(h.Sum(nil), show(first(args))), nil
		},
	})
	return o
}

func jsDigest(sum []byte, enc string) any {
	switch enc {
	case "hex", "undefined":
		if enc == "hex" {
			return hex.EncodeToString(sum)
		}
		b := &object{cells: map[string]*cell{}}
		*b = *jsMethods("Buffer", map[string]func(*machine, []any, spot) (any, error){
			"toString":     func(_ *machine, args []any, _ spot) (any, error) { return jsDigest(sum, show(first(args))), nil },
			"readUInt8":    func(_ *machine, args []any, _ spot) (any, error) { return jsRead(sum, args, 1) },
			"readUInt16BE": func(_ *machine, args []any, _ spot) (any, error) { return jsRead(sum, args, 2) },
			"readUInt32BE": func(_ *machine, args []any, _ spot) (any, error) { return jsRead(sum, args, 4) },
		})
		for i, x := range sum {
			b.set(strconv.Itoa(i), float64(x))
		}
		b.set("length", float64(len(sum)))
		return b
	case "base64":
		return base64.StdEncoding.EncodeToString(sum)
	case "base64url":
		return base64.RawURLEncoding.EncodeToString(sum)
	}
	return dontKnow("bytes as text")
}

// jsRead is a whole number of bytes, the highest first.
func jsRead(b []byte, args []any, size int) (any, error) {
	from, ok := toNumber(first(args))
	if first(args) == any(undefined) {
		from, ok = 0, true
	}
	if !ok || from < 0 || int(from)+size > len(b) {
		return nil, raise("RangeError", "The value of \"offset\" is out of range.")
	}
	n := 0.0
	for _, x := range b[int(from) : int(from)+size] {
		n = n*256 + float64(x)
	}
	return n, nil
}

// jsAssert throws where what is asserted does not hold (Node.js 24 API, "Assert").
func (m *machine) jsAssert(name string, args []any, at spot) (any, bool, error) {
	fails := func(i int) error {
		if o, ok := at2(args, i).(*object); ok && o.class != nil {
			return &thrown{o}
		}
		msg := "The expression evaluated to a falsy value"
		if t, ok := at2(args, i).(string); ok {
			msg = t
		}
		e := madeError("AssertionError", msg)
		e.set("code", "ERR_ASSERTION")
		return &thrown{e}
	}
	name = strings.TrimPrefix(strings.TrimPrefix(name, ".default"), ".strict")
	switch name {
	case "", ".ok":
		yes, ok := truth(first(args), false)
		if ok && !yes {
			return nil, true, fails(1)
		}
		return undefined, true, nil
	case ".equal", ".strictEqual", ".notEqual", ".notStrictEqual":
		same, ok := equals(first(args), at2(args, 1), strings.Contains(name, "trict"))
		if ok && same == strings.HasPrefix(name, ".not") {
			return nil, true, fails(2)
		}
		return undefined, true, nil
	case ".deepEqual", ".deepStrictEqual":
		if same, ok := equalJSON(m, first(args), at2(args, 1)); ok && !same {
			return nil, true, fails(2)
		}
		return undefined, true, nil
	case ".fail":
		return nil, true, fails(0)
	case ".match":
		p, isPattern := at2(args, 1).(*pattern)
		t, isText := first(args).(string)
		if isPattern && isText {
			re, _, err := p.compiled()
			if err == nil && !re.MatchString(t) {
				return nil, true, fails(2)
			}
		}
		return undefined, true, nil
	case ".AssertionError", ".throws", ".rejects":
		return nil, false, nil
	}
	return undefined, true, nil
}

// jsStringify is JSON.stringify with a replacer or blanks; done is false without.
func (m *machine) jsStringify(args []any, at spot) (any, bool, error) {
	v, replace, blanks := first(args), at2(args, 1), at2(args, 2)
	if len(args) < 2 {
		return nil, false, nil
	}
	if l, ok := replace.(*list); ok {
		var only func(v any, depth int) any
		only = func(v any, depth int) any {
			switch x := v.(type) {
			case *object:
				if depth > 20 || x.class != nil {
					return v
				}
				o := newObject()
				for _, k := range x.keys {
					if slices.ContainsFunc(l.items, func(n any) bool { return show(n) == k }) {
						o.set(k, only(x.cells[k].v, depth+1))
					}
				}
				return o
			}
			return v
		}
		v = only(v, 0)
	} else if fn, ok := replace.(*function); ok {
		var err error
		if v, err = m.jsRevive(fn, "", v, at, -1); err != nil {
			return nil, true, err
		}
	}
	t, ok := m.jsonText(v, 0)
	if !ok {
		return dontKnow("a text of JSON"), true, nil
	}
	if t == "" {
		return undefined, true, nil
	}
	indent := ""
	switch b := blanks.(type) {
	case float64:
		indent = strings.Repeat(" ", int(max(0, min(b, 10))))
	case string:
		indent = b[:min(len(b), 10)]
	}
	if indent == "" {
		return t, true, nil
	}
	return indented(t, indent), true, nil
}

// indented writes a text of JSON over several lines.
func indented(t, indent string) string {
	var b strings.Builder
	depth, quoted := 0, false
	line := func() { b.WriteString("\n" + strings.Repeat(indent, depth)) }
	for i := 0; i < len(t); i++ {
		c := t[i]
		switch {
		case quoted:
			b.WriteByte(c)
			if c == '\\' && i+1 < len(t) {
				i++
				b.WriteByte(t[i])
			} else if c == '"' {
				quoted = false
			}
		case c == '"':
			quoted = true
			b.WriteByte(c)
		case c == '{' || c == '[':
			b.WriteByte(c)
			if i+1 < len(t) && (t[i+1] == '}' || t[i+1] == ']') {
				i++
				b.WriteByte(t[i])
				continue
			}
			depth++
			line()
		case c == '}' || c == ']':
			depth--
			line()
			b.WriteByte(c)
		case c == ',':
			b.WriteByte(c)
			line()
		case c == ':':
			b.WriteString(": ")
		default:
			b.WriteByte(c)
		}
	}
	return b.String()
}

// jsRevive calls a function for every value of a structure: from the inside out for
// JSON.parse, with depth -1 from the outside in for JSON.stringify.
func (m *machine) jsRevive(fn *function, key string, v any, at spot, depth int) (any, error) {
	if depth > 20 {
		return nil, spent("nested too deep")
	}
	if err := m.step(); err != nil {
		return nil, err
	}
	var err error
	call := func() error {
		v, err = m.call(fn, undefined, []any{key, v}, nil, at)
		return err
	}
	outer := depth < 0
	if outer {
		if err := m.deeper(); err != nil {
			return nil, err
		}
		defer m.higher()
		if call() != nil {
			return nil, err
		}
	}
	next := depth
	if !outer {
		next++
	}
	switch x := v.(type) {
	case *list:
		l := &list{}
		for i, e := range x.items {
			w, err := m.jsRevive(fn, strconv.Itoa(i), e, at, next)
			if err != nil {
				return nil, err
			}
			l.items = append(l.items, w)
		}
		v = l
	case *object:
		if x.class != nil {
			break
		}
		o := newObject()
		for _, k := range x.keys {
			w, err := m.jsRevive(fn, k, x.cells[k].v, at, next)
			if err != nil {
				return nil, err
			}
			if w != any(undefined) {
				o.set(k, w)
			}
		}
		v = o
	}
	if !outer {
		call()
	}
	return v, err
}

// jsOrder are the names of an object in the order in which they are gone through: those
// that are numbers first (ECMA-262 2026, 10.1.11).
func jsOrder(keys []string) []string {
	index := func(k string) (int, bool) {
		n, err := strconv.Atoi(k)
		return n, err == nil && n >= 0 && strconv.Itoa(n) == k
	}
	if !slices.ContainsFunc(keys, func(k string) bool { _, ok := index(k); return ok }) {
		return keys
	}
	out := slices.Clone(keys)
	slices.SortStableFunc(out, func(a, b string) int {
		x, isX := index(a)
		y, isY := index(b)
		switch {
		case isX && isY:
			return x - y
		case isX:
			return -1
		case isY:
			return 1
		}
		return 0
	})
	return out
}

// jsTextMore calls methods of texts that take more than a text; done is false for any
// other.
func (m *machine) jsTextMore(b, name string, args []any, at spot) (any, bool, error) {
	from := func(i int) (int, bool) {
		f, ok := at2(args, i).(float64)
		return int(max(0, min(f, float64(len([]rune(b)))))), ok
	}
	switch name {
	case "indexOf", "includes", "startsWith":
		n, ok := from(1)
		w, isText := first(args).(string)
		if !ok || !isText {
			return nil, false, nil
		}
		rest := string([]rune(b)[n:])
		switch name {
		case "includes":
			return strings.Contains(rest, w), true, nil
		case "startsWith":
			return strings.HasPrefix(rest, w), true, nil
		}
		if i := strings.Index(rest, w); i >= 0 {
			return float64(n + len([]rune(rest[:i]))), true, nil
		}
		return -1.0, true, nil
	case "endsWith":
		if n, ok := from(1); ok {
			return strings.HasSuffix(string([]rune(b)[:n]), show(first(args))), true, nil
		}
	case "replace", "replaceAll":
		to := at2(args, 1)
		what, isText := first(args).(string)
		t, byText := to.(string)
		if isText && byText && strings.Contains(t, "$") {
			t = strings.NewReplacer("$$", "$", "$&", what).Replace(t)
			n := 1
			if name == "replaceAll" {
				n = -1
			}
			return strings.Replace(b, what, t, n), true, nil
		}
		fn, isFunction := to.(*function)
		if !isFunction {
			return nil, false, nil
		}
		// Of a function, which is given the places too.
		var locs [][]int
		p, isPattern := first(args).(*pattern)
		switch {
		case isPattern:
			re, global, err := p.compiled()
			if err != nil {
				return nil, true, err
			}
			n := 1
			if global || name == "replaceAll" {
				n = 1000
			}
			locs = re.FindAllStringSubmatchIndex(b, n)
		case isText && what != "":
			for at := 0; len(locs) < 1000; {
				i := strings.Index(b[at:], what)
				if i < 0 || name == "replace" && len(locs) > 0 {
					break
				}
				locs = append(locs, []int{at + i, at + i + len(what)})
				at += i + len(what)
			}
		default:
			return nil, false, nil
		}
		var out strings.Builder
		last := 0
		for _, loc := range locs {
			var with []any
			for g := 0; g < len(loc); g += 2 {
				if loc[g] < 0 {
					with = append(with, undefined)
				} else {
					with = append(with, b[loc[g]:loc[g+1]])
				}
			}
			with = append(with, float64(len([]rune(b[:loc[0]]))), b)
			v, err := m.call(fn, undefined, with, nil, at)
			if err != nil {
				return nil, true, err
			}
			if !known(v) {
				return dontKnow("what a text is replaced by"), true, nil
			}
			out.WriteString(b[last:loc[0]] + show(v))
			last = loc[1]
		}
		return out.String() + b[last:], true, m.use(len(b))
	case "localeCompare":
		if t := show(first(args)); strings.EqualFold(b, t) && b != t { // small letters first
			if strings.ToLower(b) == b {
				return -1.0, true, nil
			}
			return 1.0, true, nil
		} else if !strings.EqualFold(b, t) {
			return float64(strings.Compare(strings.ToLower(b), strings.ToLower(t))), true, nil
		}
		return 0.0, true, nil
	}
	return nil, false, nil
}

// jsListMore calls methods of lists with more than their first argument, and younger
// ones; done is false for any other.
func (m *machine) jsListMore(b *list, name string, args []any, s *scope, at spot) (any, bool, error) {
	place := func(i, def int) int {
		f, ok := at2(args, i).(float64)
		if !ok {
			return def
		}
		if f < 0 {
			f += float64(len(b.items))
		}
		return int(max(0, min(f, float64(len(b.items)))))
	}
	switch name {
	case "flat":
		depth := 1.0
		if f, ok := toNumber(first(args)); ok && len(args) > 0 {
			depth = f
		}
		l := &list{}
		var put func(items []any, depth float64) error
		put = func(items []any, depth float64) error {
			if err := m.use(len(items)); err != nil {
				return err
			}
			if err := m.deeper(); err != nil {
				return err
			}
			defer m.higher()
			for _, x := range items {
				if y, ok := x.(*list); ok && depth >= 1 {
					if err := put(y.items, depth-1); err != nil {
						return err
					}
				} else {
					l.items = append(l.items, x)
				}
			}
			return nil
		}
		return l, true, put(b.items, depth)
	case "fill":
		from, to := place(1, 0), place(2, len(b.items))
		for i := from; i < to; i++ {
			b.items[i] = first(args)
		}
		return b, true, nil
	case "includes", "indexOf":
		if x, ok := first(args).(float64); ok && math.IsNaN(x) {
			for _, y := range b.items {
				if f, ok := y.(float64); ok && math.IsNaN(f) && name == "includes" {
					return true, true, nil
				}
			}
			return map[string]any{"includes": false, "indexOf": -1.0}[name], true, nil
		}
		if len(args) < 2 {
			return nil, false, nil
		}
		n := place(1, 0)
		v, done, err := m.jsList(&list{items: b.items[n:]}, name, args[:1], s, at)
		if f, ok := v.(float64); ok && f >= 0 {
			v = f + float64(n)
		}
		return v, done, err
	case "findLastIndex":
		for i := len(b.items) - 1; i >= 0; i-- {
			v, err := m.call(first(args), undefined, []any{b.items[i], float64(i), b}, nil, at)
			if err != nil {
				return nil, true, err
			}
			yes, err := m.decide(v, s, at.n)
			if err != nil {
				return nil, true, err
			}
			if yes {
				return float64(i), true, nil
			}
		}
		return -1.0, true, nil
	case "with":
		l := &list{items: slices.Clone(b.items)}
		f, _ := toNumber(first(args))
		if f < 0 {
			f += float64(len(l.items))
		}
		if f < 0 || int(f) >= len(l.items) {
			return nil, true, raise("RangeError", "Invalid index")
		}
		l.items[int(f)] = at2(args, 1)
		return l, true, nil
	case "toSpliced":
		l := &list{items: slices.Clone(b.items)}
		_, done, err := m.jsList(l, "splice", args, s, at)
		return l, done, err
	}
	return nil, false, nil
}

// jsPrimitive is what an object is where a text or a number is asked for (ECMA-262 2026,
// 7.1.1): what its methods give.
func (m *machine) jsPrimitive(v any, hint string, s *scope, n *code.Node) (any, error) {
	o, ok := v.(*object)
	if !ok {
		return v, nil
	}
	find := func(name string) *function {
		if c := o.cells[name]; c != nil {
			f, _ := c.v.(*function)
			return f
		}
		if o.class != nil && (!o.class.builtin || o.class.name == "Buffer") {
			if f := m.method(o, name); f != nil {
				return f
			}
		}
		for p := o.proto; p != nil; p = p.proto {
			if c := p.cells[name]; c != nil {
				f, _ := c.v.(*function)
				return f
			}
		}
		return nil
	}
	at := spot{s.module.file, n}
	if f := find(keyText(mark{"Symbol.toPrimitive"})); f != nil {
		return m.call(f, o, []any{hint}, nil, at)
	}
	order := []string{"valueOf", "toString"}
	if hint == "string" {
		order = []string{"toString", "valueOf"}
	}
	for _, name := range order {
		f := find(name)
		if f == nil {
			continue
		}
		w, err := m.call(f, o, nil, nil, at)
		if err != nil {
			return nil, err
		}
		if _, again := w.(*object); !again {
			return w, nil
		}
	}
	if c := o.cells["message"]; c != nil && o.class != nil { // an error
		name := o.class.name
		if c := o.cells["name"]; c != nil {
			name = show(c.v)
		} else if !o.class.builtin {
			name = "Error"
		}
		return name + ": " + show(c.v), nil
	}
	return v, nil
}

// prototypeOf is the object on which those are made that a function makes.
func prototypeOf(f *function) *object {
	if f.props == nil {
		f.props = newObject()
	}
	if c := f.props.cells["prototype"]; c != nil {
		p, _ := c.v.(*object)
		return p
	}
	p := newObject()
	f.props.set("prototype", p)
	return p
}

// outsidePrototype is the class from outside whose prototype a value is.
func outsidePrototype(v any) (*opaque, bool) {
	o, ok := v.(*opaque)
	if !ok || o.path == "" || !strings.HasSuffix(o.path, ".prototype") {
		return nil, false
	}
	return &opaque{path: strings.TrimSuffix(o.path, ".prototype")}, true
}

// matchedTexts are what a regular expression found, as a list; nil for any other object.
func matchedTexts(o *object) *list {
	if o.class == nil || o.class.name != "match" || !o.class.builtin {
		return nil
	}
	l := &list{}
	for i := 0; ; i++ {
		c := o.cells[strconv.Itoa(i)]
		if c == nil {
			return l
		}
		l.items = append(l.items, c.v)
	}
}
