package trace

import (
	"bytes"
	"encoding/base64"
	"encoding/hex"
	"hash/crc32"
	"math"
	"math/big"
	"net/netip"
	"net/url"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"ubique/core/code"
)

// pyMath are functions of one number (Python 3.14, "math").
var pyMath = map[string]func(float64) float64{
	"math.sin": math.Sin, "math.cos": math.Cos, "math.tan": math.Tan, "math.exp": math.Exp, "math.log10": math.Log10, "math.log1p": math.Log1p, "math.cbrt": math.Cbrt, "math.fabs": math.Abs, "math.radians": func(x float64) float64 { return x * math.Pi / 180 }, "math.degrees": func(x float64) float64 { return x * 180 / math.Pi },
}

// pyStandard calls functions of Python's library that make a value of what they are
// given; done is false for any other (Python 3.14 library reference).
func (m *machine) pyStandard(f *opaque, args []any, keys map[string]any, at spot) (v any, done bool, err error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	if rest, ok := strings.CutPrefix(f.path, "itertools."); ok {
		return m.pyIterate(rest, args, keys, at)
	}
	if strings.HasPrefix(f.path, "hashlib.") {
		make := digests[strings.TrimPrefix(f.path, "hashlib.")]
		data := arg(0)
		if f.path == "hashlib.new" {
			name, _ := arg(0).(string)
			make, data = digests[name], arg(1)
		}
		if make == nil || !known(data) {
			return nil, false, nil
		}
		h := make()
		if t, ok := data.(string); ok {
			h.Write([]byte(t))
		}
		var o *object
		o = jsMethods("hash", map[string]func(*machine, []any, spot) (any, error){
			"update": func(m *machine, args []any, _ spot) (any, error) {
				t, ok := first(args).(string)
				if !ok {
					return nil, undecided("what is hashed")
				}
				h.Write([]byte(t))
				return nil, m.use(len(t))
			},
			"hexdigest": func(*machine, []any, spot) (any, error) { return hex.EncodeToString(h.Sum(nil)), nil },
			"digest":    func(*machine, []any, spot) (any, error) { return string(h.Sum(nil)), nil },
		})
		return o, true, nil
	}
	if unclear(args, 2) != nil || unclear(sortedValues(keys), 2) != nil {
		return nil, false, nil
	}
	text, isText := arg(0).(string)
	if p, isPath := arg(0).(pyPath); isPath {
		text, isText = string(p), true
	}
	number := func(i int) (float64, bool) { return pyNumber(arg(i)) }
	if fn := pyMath[f.path]; fn != nil {
		if x, ok := number(0); ok {
			return fn(x), true, nil
		}
	}
	switch f.path {
	case "round":
		x, ok := arg(0).(float64)
		n, given := arg(1).(integer)
		if d, ok := keys["ndigits"].(integer); ok {
			n, given = d, true
		}
		if ok && given && n >= 0 && n < 17 {
			r, err := strconv.ParseFloat(strconv.FormatFloat(x, 'f', int(n), 64), 64)
			return r, err == nil, nil
		}
	case "pow":
		a, ok1 := arg(0).(integer)
		b, ok2 := arg(1).(integer)
		c, ok3 := arg(2).(integer)
		if len(args) == 3 && ok1 && ok2 && ok3 && b >= 0 && c > 0 {
			return integer(new(big.Int).Exp(big.NewInt(int64(a)), big.NewInt(int64(b)), big.NewInt(int64(c))).Int64()), true, nil
		}
	case "issubclass":
		c, ok := arg(0).(*class)
		d, also := arg(1).(*class)
		if ok && also {
			return derives(c, d), true, nil
		}
	case "bytes.fromhex", "bytearray.fromhex":
		b, err := hex.DecodeString(strings.Join(strings.Fields(text), ""))
		if isText && err != nil {
			return nil, true, certainly("ValueError", "non-hexadecimal number found in fromhex() arg")
		}
		return string(b), isText, nil
	case "bytes", "bytearray":
		l, ok := arg(0).(*list)
		if isText {
			return text, true, nil
		}
		if !ok {
			return nil, false, nil
		}
		var b []byte
		for _, x := range l.items {
			n, ok := x.(integer)
			if !ok || n < 0 || n > 255 {
				return nil, false, nil
			}
			b = append(b, byte(n))
		}
		return string(b), true, nil
	case "int.from_bytes":
		if order, _ := arg(1).(string); isText && order != "little" && keys["byteorder"] == nil && keys["signed"] == nil && len(text) <= 7 {
			n := integer(0)
			for i := range len(text) {
				n = n<<8 | integer(text[i])
			}
			return n, true, nil
		}
	case "str.maketrans":
		o := newObject()
		o.dict = true
		if d, ok := arg(0).(*object); ok && len(args) == 1 {
			return d, true, nil
		}
		to, ok := arg(1).(string)
		a, b := []rune(text), []rune(to)
		if !isText || !ok || len(a) != len(b) {
			return nil, false, nil
		}
		for i := range a {
			o.set(string(a[i]), string(b[i]))
		}
		if gone, ok := arg(2).(string); ok {
			for _, r := range gone {
				o.set(string(r), nil)
			}
		}
		return o, true, nil
	case "dict.fromkeys", "collections.OrderedDict.fromkeys":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		o := newObject()
		o.dict = true
		for _, k := range items {
			o.set(keyText(k), arg(1))
		}
		return o, true, nil
	case "textwrap.dedent", "inspect.cleandoc":
		if isText && f.path == "textwrap.dedent" {
			return dedented(text), true, nil
		}
	case "textwrap.indent":
		prefix, ok := arg(1).(string)
		if isText && ok && len(args) == 2 {
			lines := strings.SplitAfter(text, "\n")
			for i, l := range lines {
				if strings.TrimSpace(l) != "" {
					lines[i] = prefix + l
				}
			}
			return strings.Join(lines, ""), true, nil
		}
	case "shlex.join":
		if l, ok := arg(0).(*list); ok {
			var parts []string
			for _, x := range l.items {
				q, done, err := m.pyBuiltin(&opaque{path: "shlex.quote"}, []any{x}, nil, at)
				if err != nil || !done {
					return nil, done, err
				}
				parts = append(parts, show(q))
			}
			return strings.Join(parts, " "), true, nil
		}
	case "base64.b64encode", "base64.standard_b64encode":
		return base64.StdEncoding.EncodeToString([]byte(text)), isText, nil
	case "base64.urlsafe_b64encode":
		return base64.URLEncoding.EncodeToString([]byte(text)), isText, nil
	case "base64.b64decode", "base64.standard_b64decode", "base64.urlsafe_b64decode":
		enc := base64.StdEncoding
		if strings.Contains(f.path, "urlsafe") {
			enc = base64.URLEncoding
		}
		b, err := enc.DecodeString(text)
		if err != nil {
			return nil, isText, raise("ValueError", "Incorrect padding")
		}
		return string(b), isText, nil
	case "zlib.crc32", "binascii.crc32":
		return integer(crc32.ChecksumIEEE([]byte(text))), isText && len(args) == 1, nil
	case "binascii.hexlify":
		return hex.EncodeToString([]byte(text)), isText, nil
	case "urllib.parse.quote", "urllib.parse.quote_plus":
		safe := "/"
		if s, ok := keys["safe"].(string); ok {
			safe = s
		} else if s, ok := arg(1).(string); ok {
			safe = s
		} else if strings.HasSuffix(f.path, "_plus") {
			safe = ""
		}
		var b strings.Builder
		for i := range len(text) {
			switch c := text[i]; {
			case c < 0x80 && (strings.IndexByte("_.-~", c) >= 0 || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || strings.IndexByte(safe, c) >= 0):
				b.WriteByte(c)
			case c == ' ' && strings.HasSuffix(f.path, "_plus"):
				b.WriteByte('+')
			default:
				b.WriteString("%" + strings.ToUpper(hex.EncodeToString([]byte{c})))
			}
		}
		return b.String(), isText, nil
	case "urllib.parse.unquote", "urllib.parse.unquote_plus":
		if strings.HasSuffix(f.path, "_plus") {
			text = strings.ReplaceAll(text, "+", " ")
		}
		t, err := url.PathUnescape(text)
		return t, isText && err == nil, nil
	case "urllib.parse.urljoin":
		to, ok := arg(1).(string)
		base, err1 := url.Parse(text)
		u, err2 := url.Parse(to)
		if isText && ok && err1 == nil && err2 == nil {
			return base.ResolveReference(u).String(), true, nil
		}
	case "urllib.parse.urlencode":
		if o, ok := arg(0).(*object); ok && len(keys) == 0 {
			var parts []string
			for _, k := range o.keys {
				parts = append(parts, url.QueryEscape(k)+"="+url.QueryEscape(pyShow(o.cells[k].v)))
			}
			return strings.Join(parts, "&"), true, nil
		}
	case "urllib.parse.parse_qs", "urllib.parse.parse_qsl":
		o := newObject()
		o.dict = true
		l := &list{}
		for part := range strings.SplitSeq(text, "&") {
			k, v, ok := strings.Cut(part, "=")
			name, err1 := url.QueryUnescape(k)
			w, err2 := url.QueryUnescape(v)
			if !ok || v == "" || err1 != nil || err2 != nil {
				continue
			}
			l.items = append(l.items, &list{items: []any{name, w}, tuple: true})
			if had, there := o.get(name); there {
				had.(*list).items = append(had.(*list).items, w)
			} else {
				o.set(name, &list{items: []any{w}})
			}
		}
		if strings.HasSuffix(f.path, "qsl") {
			return l, isText, nil
		}
		return o, isText, nil
	case "ipaddress.ip_address", "ipaddress.IPv4Address", "ipaddress.IPv6Address":
		if !isText {
			return nil, false, nil
		}
		a, err := netip.ParseAddr(text)
		if err != nil || a.Zone() != "" || strings.Contains(f.path, "v4") && !a.Is4() || strings.Contains(f.path, "v6") && a.Is4() {
			return nil, true, certainly("ValueError", "'"+text+"' does not appear to be an IPv4 or IPv6 address")
		}
		return pyAddress(a), true, nil
	case "statistics.mean", "statistics.median", "statistics.fmean":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil || len(items) == 0 {
			return nil, err != nil, err
		}
		var n []float64
		for _, x := range items {
			y, ok := toNumber(x)
			if !ok {
				return nil, false, nil
			}
			n = append(n, y)
		}
		slices.Sort(n)
		r := 0.0
		if strings.HasSuffix(f.path, "median") {
			if r = n[len(n)/2]; len(n)%2 == 0 {
				r = (r + n[len(n)/2-1]) / 2
			}
		} else {
			for _, x := range n {
				r += x
			}
			r /= float64(len(n))
		}
		if r == math.Trunc(r) && f.path != "statistics.fmean" {
			return integer(r), true, nil
		}
		return r, true, nil
	case "math.factorial", "math.comb", "math.perm":
		n, ok := arg(0).(integer)
		k, two := arg(1).(integer)
		if !ok || n < 0 || n > 20 || f.path != "math.factorial" && !two {
			return nil, false, nil
		}
		r := integer(1)
		switch f.path {
		case "math.factorial":
			for i := integer(2); i <= n; i++ {
				r *= i
			}
		case "math.comb":
			r = integer(new(big.Int).Binomial(int64(n), int64(k)).Int64())
		default:
			for i := n - k + 1; i <= n; i++ {
				r *= i
			}
		}
		return r, true, nil
	case "math.isclose":
		a, ok1 := number(0)
		b, ok2 := number(1)
		if ok1 && ok2 && len(keys) == 0 {
			return math.Abs(a-b) <= 1e-9*max(math.Abs(a), math.Abs(b)), true, nil
		}
	case "math.isnan", "math.isinf", "math.isfinite":
		if x, ok := number(0); ok {
			return map[string]bool{"math.isnan": math.IsNaN(x), "math.isinf": math.IsInf(x, 0), "math.isfinite": !math.IsNaN(x) && !math.IsInf(x, 0)}[f.path], true, nil
		}
	case "math.prod":
		items, err := m.items(arg(0), m.topOf(at))
		r := any(integer(1))
		for _, x := range items {
			if r, err = pyOperate("*", r, x); err != nil {
				break
			}
		}
		return r, true, err
	case "math.hypot":
		a, ok1 := number(0)
		b, ok2 := number(1)
		return math.Hypot(a, b), ok1 && ok2, nil
	case "operator.add", "operator.sub", "operator.mul", "operator.truediv", "operator.floordiv", "operator.mod", "operator.pow", "operator.eq", "operator.ne", "operator.lt", "operator.le", "operator.gt", "operator.ge", "operator.or_", "operator.and_", "operator.xor":
		sign := map[string]string{"add": "+", "sub": "-", "mul": "*", "truediv": "/", "floordiv": "//", "mod": "%", "pow": "**", "eq": "==", "ne": "!=", "lt": "<", "le": "<=", "gt": ">", "ge": ">=", "or_": "|", "and_": "&", "xor": "^"}[f.path[len("operator."):]]
		if len(args) == 2 {
			v, err := m.operate(sign, arg(0), arg(1), m.topOf(at), at.n)
			return v, true, err
		}
	case "os.path.isabs":
		return strings.HasPrefix(text, "/"), isText, nil
	case "os.path.normpath":
		return path.Clean(text), isText, nil
	case "os.path.split":
		i := strings.LastIndexByte(text, '/') + 1
		head := text[:i]
		if strings.Trim(head, "/") != "" {
			head = strings.TrimRight(head, "/")
		}
		return &list{items: []any{head, text[i:]}, tuple: true}, isText, nil
	case "os.path.relpath":
		from, ok := arg(1).(string)
		if isText && (ok || len(args) == 1) {
			if !ok {
				from = "."
			}
			if r := relativePath(from, text); r != "" {
				return r, true, nil
			}
			return ".", true, nil
		}
	case "os.path.commonpath":
		if l, ok := arg(0).(*list); ok && len(l.items) > 0 {
			var common []string
			for i, x := range l.items {
				t, ok := x.(string)
				if !ok {
					return nil, false, nil
				}
				parts := strings.Split(strings.TrimRight(t, "/"), "/")
				if i == 0 {
					common = parts
				}
				n := 0
				for n < len(common) && n < len(parts) && common[n] == parts[n] {
					n++
				}
				common = common[:n]
			}
			return strings.Join(common, "/"), true, nil
		}
	case "json.dumps":
		return m.pyDumps(arg(0), keys)
	case "re.escape":
		var b strings.Builder
		for _, r := range text {
			if !(r == '_' || r >= 0x80 || unicode.IsLetter(r) || unicode.IsDigit(r)) && !strings.ContainsRune("!\"%',/:;<=>@`", r) {
				b.WriteByte('\\')
			}
			b.WriteRune(r)
		}
		return b.String(), isText, nil
	case "copy.deepcopy", "copy.copy":
		switch x := arg(0).(type) {
		case *list:
			if f.path == "copy.copy" {
				return &list{items: slices.Clone(x.items), tuple: x.tuple, set: x.set}, true, nil
			}
			return m.copied(x), true, nil
		case *object:
			if x.dict && !holdsCode(x, 0) && f.path == "copy.deepcopy" {
				return m.copied(x), true, nil
			}
		case nil, bool, integer, float64, string:
			return x, true, nil
		}
	case "bisect.bisect_left", "bisect.bisect", "bisect.bisect_right":
		l, ok := arg(0).(*list)
		if !ok || len(args) > 2 || len(keys) > 0 {
			return nil, false, nil
		}
		for i, x := range l.items {
			n, ok := pyLess(x, arg(1))
			if !ok {
				return nil, false, nil
			}
			if n > 0 || n == 0 && strings.HasSuffix(f.path, "left") {
				return integer(i), true, nil
			}
		}
		return integer(len(l.items)), true, nil
	case "heapq.nsmallest", "heapq.nlargest":
		n, ok := arg(0).(integer)
		if !ok || len(keys) > 0 {
			return nil, false, nil
		}
		v, done, err := m.pyBuiltin(&opaque{path: "sorted"}, []any{arg(1)}, map[string]any{"reverse": f.path == "heapq.nlargest"}, at)
		if l, ok := v.(*list); ok && err == nil {
			return &list{items: l.items[:min(max(0, int(n)), len(l.items))]}, true, nil
		}
		return v, done, err
	case "io.StringIO":
		if len(args) == 1 && isText {
			return &content{text: text}, true, nil
		}
	}
	return nil, false, nil
}

// What functions of itertools take (Python 3.14, "itertools"): those whose first argument
// is a function, and those of which only the first is gone through.
var (
	calledFirst    = words("takewhile dropwhile filterfalse starmap")
	goneThroughOne = words("combinations permutations accumulate groupby combinations_with_replacement")
)

// pyNumber is a number of Python, whichever kind it is.
func pyNumber(v any) (float64, bool) {
	switch x := v.(type) {
	case integer:
		return float64(x), true
	case float64:
		return x, true
	}
	return 0, false
}

func sortedValues(keys map[string]any) (list []any) {
	for _, k := range sortedKeys(keys) {
		list = append(list, keys[k])
	}
	return list
}

// pyAddress is an address of module ipaddress.
func pyAddress(a netip.Addr) *object {
	o := newObject()
	o.class = &class{name: "IPAddress", builtin: true, statics: newObject(), methods: newObject()}
	o.class.methods.set("__str__", &function{name: "__str__", native: func(*machine, any, []any, map[string]any, spot) (any, error) { return a.String(), nil }})
	version := integer(4)
	if a.Is6() {
		version = 6
	}
	for k, v := range map[string]any{"version": version, "is_loopback": a.IsLoopback(), "is_unspecified": a.IsUnspecified(), "is_private": a.IsPrivate() || a.IsLoopback(), "is_multicast": a.IsMulticast(), "is_link_local": a.IsLinkLocalUnicast(), "compressed": a.String(), "exploded": a.StringExpanded()} {
		o.set(k, v)
	}
	return o
}

// dedented is a text without the blanks that all of its lines begin with (Python 3.14,
// "textwrap.dedent").
func dedented(text string) string {
	lines := strings.Split(text, "\n")
	margin, have := "", false
	for i, l := range lines {
		if strings.TrimSpace(l) == "" {
			lines[i] = ""
			continue
		}
		lead := l[:len(l)-len(strings.TrimLeft(l, " \t"))]
		if !have {
			margin, have = lead, true
		}
		for !strings.HasPrefix(lead, margin) {
			margin = margin[:len(margin)-1]
		}
	}
	for i, l := range lines {
		lines[i] = strings.TrimPrefix(l, margin)
	}
	return strings.Join(lines, "\n")
}

// pyDumps is json.dumps (Python 3.14, "json").
func (m *machine) pyDumps(v any, keys map[string]any) (any, bool, error) {
	for k := range keys {
		switch k {
		case "indent", "sort_keys", "separators", "ensure_ascii":
		default:
			return nil, false, nil
		}
	}
	if keys["sort_keys"] == true {
		v = sortedNames(v, 0)
	}
	t, ok := m.jsonText(v, 0)
	if !ok || t == "" {
		return nil, false, nil
	}
	if keys["ensure_ascii"] != false {
		var b strings.Builder
		for _, r := range t {
			if r < 0x80 {
				b.WriteRune(r)
			} else if r > 0xffff {
				r -= 0x10000
				b.WriteString("\\u" + strconv.FormatInt(int64(0xd800+r>>10), 16) + "\\u" + strconv.FormatInt(int64(0xdc00+r&0x3ff), 16))
			} else {
				b.WriteString("\\u" + strings.Repeat("0", 4-len(strconv.FormatInt(int64(r), 16))) + strconv.FormatInt(int64(r), 16))
			}
		}
		t = b.String()
	}
	l, separated := keys["separators"].(*list)
	switch indent := keys["indent"].(type) {
	case integer:
		if separated || indent < 0 || indent > 20 {
			return nil, false, nil
		}
		return indented(t, strings.Repeat(" ", int(indent))), true, nil
	case string:
		return indented(t, indent), !separated, nil
	}
	if !separated {
		return spacedJSON(t), true, nil
	}
	if len(l.items) == 2 && l.items[0] == any(",") && l.items[1] == any(":") {
		return t, true, nil
	}
	return nil, false, nil
}

// sortedNames is a value whose dictionaries are in the order of their names.
func sortedNames(v any, depth int) any {
	switch x := v.(type) {
	case *object:
		if depth > 20 || !x.dict {
			return v
		}
		o := newObject()
		o.dict = true
		names := slices.Sorted(slices.Values(x.keys))
		for _, k := range names {
			o.set(k, sortedNames(x.cells[k].v, depth+1))
		}
		return o
	case *list:
		l := &list{tuple: x.tuple}
		for _, e := range x.items {
			l.items = append(l.items, sortedNames(e, depth+1))
		}
		return l
	}
	return v
}

// pyIterate calls a function of itertools; what has no end is given as far as a program
// may go (Python 3.14, "itertools").
func (m *machine) pyIterate(name string, args []any, keys map[string]any, at spot) (any, bool, error) {
	top := m.topOf(at)
	arg := func(i int) any { return at2(args, i) }
	const far = 2048
	out := &list{gen: true}
	add := func(v any) { out.items = append(out.items, v) }
	tuple := func(items []any) { add(&list{items: slices.Clone(items), tuple: true}) }
	done := func() (any, bool, error) { return out, true, m.use(len(out.items)) }
	switch name {
	case "count":
		from, step := any(integer(0)), any(integer(1))
		if len(args) > 0 {
			from = args[0]
		} else if v, ok := keys["start"]; ok {
			from = v
		}
		if len(args) > 1 {
			step = args[1]
		} else if v, ok := keys["step"]; ok {
			step = v
		}
		for range far {
			add(from)
			var err error
			if from, err = pyOperate("+", from, step); err != nil {
				return nil, true, err
			}
		}
		return done()
	case "chain", "islice", "repeat", "tee":
		return nil, false, nil
	}
	var lists [][]any
	for i, a := range args {
		if i == 0 && calledFirst[name] || i > 0 && goneThroughOne[name] {
			continue
		}
		l, err := m.items(a, top)
		if err != nil {
			return nil, true, err
		}
		lists = append(lists, l)
	}
	if len(lists) == 0 {
		return nil, false, nil
	}
	l := lists[0]
	holds := func(x any) (bool, error) {
		if arg(0) == nil {
			return m.decide(x, top, at.n)
		}
		v, err := m.call(arg(0), undefined, []any{x}, nil, at)
		if err != nil {
			return false, err
		}
		return m.decide(v, top, at.n)
	}
	switch name {
	case "cycle":
		for i := 0; i < far && len(l) > 0; i++ {
			add(l[i%len(l)])
		}
		return done()
	case "product":
		if keys["repeat"] != nil {
			n, ok := keys["repeat"].(integer)
			if !ok || n < 1 || n > 8 || len(lists) != 1 {
				return nil, false, nil
			}
			for range n - 1 {
				lists = append(lists, l)
			}
		}
		rows := [][]any{nil}
		for _, next := range lists {
			var more [][]any
			for _, row := range rows {
				for _, x := range next {
					if len(more) > maxItems {
						return nil, true, spent("a list that is too long")
					}
					more = append(more, append(slices.Clone(row), x))
				}
			}
			rows = more
		}
		for _, row := range rows {
			tuple(row)
		}
		return done()
	case "combinations", "permutations", "combinations_with_replacement":
		n, ok := arg(1).(integer)
		if !ok {
			if name != "permutations" {
				return nil, false, nil
			}
			n = integer(len(l))
		}
		var pick func(chosen []int) error
		pick = func(chosen []int) error {
			if err := m.step(); err != nil {
				return err
			}
			if len(chosen) == int(n) {
				var row []any
				for _, i := range chosen {
					row = append(row, l[i])
				}
				tuple(row)
				return nil
			}
			from := 0
			if len(chosen) > 0 && name != "permutations" {
				from = chosen[len(chosen)-1]
				if name == "combinations" {
					from++
				}
			}
			for i := from; i < len(l); i++ {
				if name == "permutations" && slices.Contains(chosen, i) {
					continue
				}
				if err := pick(append(slices.Clone(chosen), i)); err != nil {
					return err
				}
			}
			return nil
		}
		if n < 0 {
			return nil, false, nil
		}
		if err := pick(nil); err != nil {
			return nil, true, err
		}
		return done()
	case "groupby":
		fn := arg(1)
		if k, ok := keys["key"]; ok {
			fn = k
		}
		var last any
		var group *list
		for _, x := range l {
			k := x
			if fn != nil && fn != any(undefined) {
				var err error
				if k, err = m.call(fn, undefined, []any{x}, nil, at); err != nil {
					return nil, true, err
				}
			}
			same := false
			if group != nil {
				var ok bool
				if same, ok = equals(last, k, true); !ok {
					return nil, true, undecided("which items belong together")
				}
			}
			if !same {
				group = &list{gen: true}
				tuple([]any{k, group})
			}
			group.items = append(group.items, x)
			last = k
		}
		return done()
	case "takewhile", "dropwhile", "filterfalse":
		began := false
		for _, x := range l {
			yes, err := holds(x)
			if err != nil {
				return nil, true, err
			}
			if name == "takewhile" && !yes {
				break
			}
			began = began || !yes
			if name == "takewhile" || name == "dropwhile" && began || name == "filterfalse" && !yes {
				add(x)
			}
		}
		return done()
	case "starmap":
		for _, x := range l {
			row, err := m.items(x, top)
			if err != nil {
				return nil, true, err
			}
			v, err := m.call(arg(0), undefined, row, nil, at)
			if err != nil {
				return nil, true, err
			}
			add(v)
		}
		return done()
	case "pairwise":
		for i := 1; i < len(l); i++ {
			tuple(l[i-1 : i+1])
		}
		return done()
	case "compress":
		if len(lists) > 1 {
			for i, x := range l {
				if i < len(lists[1]) {
					yes, err := m.decide(lists[1][i], top, at.n)
					if err != nil {
						return nil, true, err
					}
					if yes {
						add(x)
					}
				}
			}
			return done()
		}
	case "zip_longest":
		n := 0
		for _, x := range lists {
			n = max(n, len(x))
		}
		for i := range n {
			var row []any
			for _, x := range lists {
				if i < len(x) {
					row = append(row, x[i])
				} else {
					row = append(row, keys["fillvalue"])
				}
			}
			tuple(row)
		}
		return done()
	case "accumulate":
		var sum any
		for i, x := range l {
			var err error
			if i == 0 {
				sum = x
			} else if fn := arg(1); fn != nil && fn != any(undefined) {
				sum, err = m.call(fn, undefined, []any{sum, x}, nil, at)
			} else {
				sum, err = pyOperate("+", sum, x)
			}
			if err != nil {
				return nil, true, err
			}
			add(sum)
		}
		return done()
	}
	return nil, false, nil
}

// pyTextMore calls methods of texts; done is false for any other.
func (m *machine) pyTextMore(b, name string, args []any, keys map[string]any) (any, bool, error) {
	width, isWidth := first(args).(integer)
	fill := " "
	if f, ok := at2(args, 1).(string); ok {
		fill = f
	}
	pad := int(width) - len([]rune(b))
	all := func(ok func(r rune) bool) (any, bool, error) {
		for _, r := range b {
			if !ok(r) {
				return false, true, nil
			}
		}
		return true, true, nil
	}
	switch name {
	case "center", "ljust", "rjust":
		if !isWidth || pad > maxText {
			return nil, false, nil
		}
		if pad <= 0 {
			return b, true, nil
		}
		left := map[string]int{"center": pad/2 + pad&int(width)&1, "ljust": 0, "rjust": pad}[name]
		return strings.Repeat(fill, left) + b + strings.Repeat(fill, pad-left), true, nil
	case "zfill":
		if !isWidth || pad <= 0 || pad > maxText {
			return b, isWidth, nil
		}
		sign := ""
		if strings.HasPrefix(b, "-") || strings.HasPrefix(b, "+") {
			sign, b = b[:1], b[1:]
		}
		return sign + strings.Repeat("0", pad) + b, true, nil
	case "isalnum":
		if b == "" {
			return false, true, nil
		}
		return all(func(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) })
	case "isascii":
		return all(func(r rune) bool { return r < 0x80 })
	case "isprintable":
		return all(unicode.IsPrint)
	case "isidentifier":
		for i, r := range b {
			if r != '_' && !unicode.IsLetter(r) && (i == 0 || !unicode.IsDigit(r)) {
				return false, true, nil
			}
		}
		return b != "", true, nil
	case "rindex":
		what, ok := first(args).(string)
		i := strings.LastIndex(b, what)
		if ok && i < 0 {
			return nil, true, certainly("ValueError", "substring not found")
		}
		return integer(len([]rune(b[:max(i, 0)]))), ok && len(args) == 1, nil
	case "translate":
		o, ok := first(args).(*object)
		if !ok {
			return nil, false, nil
		}
		var out strings.Builder
		for _, r := range b {
			v, has := o.get(string(r))
			if !has {
				v, has = o.get(keyText(integer(r)))
			}
			switch {
			case !has:
				out.WriteRune(r)
			case v == nil:
			default:
				t, isText := v.(string)
				if !isText {
					return nil, false, nil
				}
				out.WriteString(t)
			}
		}
		return out.String(), true, nil
	case "splitlines":
		keep := first(args) == any(true) || keys["keepends"] == true
		l := &list{}
		for line := range strings.SplitAfterSeq(strings.ReplaceAll(b, "\r\n", "\n"), "\n") {
			if line == "" {
				continue
			}
			if !keep {
				line = strings.TrimSuffix(line, "\n")
			} else if strings.Contains(b, "\r\n") {
				return nil, false, nil
			}
			l.items = append(l.items, line)
		}
		return l, true, m.use(len(l.items))
	case "hex": // of bytes
		return hex.EncodeToString([]byte(b)), len(args) == 0, nil
	}
	return nil, false, nil
}

// pyNumberMethod calls a method of a number; done is false for any other.
func pyNumberMethod(v any, name string, args []any) (any, bool) {
	switch name {
	case "is_integer":
		f, ok := toNumber(v)
		return f == math.Trunc(f) && !math.IsInf(f, 0), ok
	case "bit_length", "bit_count":
		n, ok := v.(integer)
		if !ok {
			return nil, false
		}
		b := big.NewInt(int64(n))
		if name == "bit_length" {
			return integer(b.BitLen()), true
		}
		return integer(strings.Count(b.Abs(b).Text(2), "1")), true
	case "to_bytes":
		n, ok := v.(integer)
		size, sized := first(args).(integer)
		if order, given := at2(args, 1).(string); !ok || !sized || given && order != "big" || n < 0 || size < 1 || size > 8 {
			return nil, false
		}
		var b bytes.Buffer
		for i := int(size) - 1; i >= 0; i-- {
			b.WriteByte(byte(n >> (8 * i)))
		}
		return b.String(), true
	}
	return nil, false
}

// pySigns are the methods that operators call, and those that they call on what stands
// right (Python 3.14, "Data model", 3.3.8).
var pySigns = map[string][2]string{"+": {"__add__", "__radd__"}, "-": {"__sub__", "__rsub__"}, "*": {"__mul__", "__rmul__"}, "/": {"__truediv__", "__rtruediv__"}, "//": {"__floordiv__", "__rfloordiv__"}, "%": {"__mod__", "__rmod__"}, "**": {"__pow__", "__rpow__"}, "|": {"__or__", "__ror__"}, "&": {"__and__", "__rand__"},
	"<": {"__lt__", "__gt__"}, ">": {"__gt__", "__lt__"}, "<=": {"__le__", "__ge__"}, ">=": {"__ge__", "__le__"}}

// pySigned calls the method of an object that an operator stands for; done is false where
// neither has one.
func (m *machine) pySigned(name string, a, b any, s *scope, n *code.Node) (v any, done bool, err error) {
	at := spot{s.module.file, n}
	names, ok := pySigns[name]
	if !ok {
		return nil, false, nil
	}
	own := func(v any, name string) *function {
		o, ok := v.(*object)
		if !ok || o.class == nil || o.class.builtin {
			return nil
		}
		return m.method(o, name)
	}
	if f := own(a, names[0]); f != nil {
		v, err := m.call(f, a, []any{b}, nil, at)
		return v, true, err
	}
	if f := own(b, names[1]); f != nil {
		v, err := m.call(f, b, []any{a}, nil, at)
		return v, true, err
	}
	x, ok1 := a.(*object)
	y, ok2 := b.(*object)
	if !comparing[name] || !ok1 || !ok2 || x.class == nil || x.class != y.class {
		return nil, false, nil
	}
	if f := own(a, "__lt__"); f != nil { // functools.total_ordering makes the others of it
		less, err := m.call(f, a, []any{b}, nil, at)
		if err != nil {
			return nil, true, err
		}
		lt, ok := truth(less, true)
		if !ok {
			return dontKnow("how two things compare"), true, nil
		}
		if name == ">=" {
			return !lt, true, nil
		}
		same, err := m.operate("==", a, b, s, n)
		eq, ok := same.(bool)
		if err != nil || !ok {
			return dontKnow("how two things compare"), true, err
		}
		if name == ">" {
			return !lt && !eq, true, nil
		}
		return lt || eq, true, nil
	}
	if x.class.data { // field by field, as a data class with order does
		for _, k := range x.keys {
			c := y.cells[k]
			if c == nil {
				return nil, false, nil
			}
			n, ok := pyLess(x.cells[k].v, c.v)
			if !ok {
				return nil, false, nil
			}
			if n != 0 {
				return ordered(name, n), true, nil
			}
		}
		return name == "<=" || name == ">=", true, nil
	}
	return nil, false, nil
}
