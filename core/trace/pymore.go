package trace

import (
	"math"
	"math/big"
	"path"
	"slices"
	"strconv"
	"strings"
)

// pyMore are further functions of the language and of math, itertools, json, os.path
// and collections (Python 3.14 library reference); done is false for any other.
func (m *machine) pyMore(f *opaque, args []any, keys map[string]any, at spot) (any, bool, error) {
	arg := func(i int) any { return at2(args, i) }
	if !strings.HasPrefix(f.path, "collections.") && unclear(args, 2) != nil {
		return nil, false, nil
	}
	num := func(i int) (float64, bool) { return pyNumber(arg(i)) }
	wrong := func() (any, bool, error) { return nil, true, raise("TypeError", "a value of another type") }
	switch f.path {
	case "pow":
		if len(args) == 2 {
			v, err := pyOperate("**", arg(0), arg(1))
			return v, true, err
		}
	case "ord":
		if t, ok := arg(0).(string); ok && len([]rune(t)) == 1 {
			return integer([]rune(t)[0]), true, nil
		}
		return wrong()
	case "chr":
		if n, ok := arg(0).(integer); ok && n >= 0 && n <= 0x10ffff {
			return string(rune(n)), true, nil
		}
		return wrong()
	case "bin", "oct":
		if n, ok := arg(0).(integer); ok {
			base, head := 2, "0b"
			if f.path == "oct" {
				base, head = 8, "0o"
			}
			t := strconv.FormatInt(int64(n), base)
			if rest, minus := strings.CutPrefix(t, "-"); minus {
				return "-" + head + rest, true, nil
			}
			return head + t, true, nil
		}
	case "hash":
		if n, ok := arg(0).(integer); ok {
			return n, true, nil
		}
	case "math.floor", "math.ceil", "math.trunc":
		x, ok := num(0)
		if !ok || math.IsNaN(x) || math.IsInf(x, 0) {
			return wrong()
		}
		return integer(map[string]func(float64) float64{"math.floor": math.Floor, "math.ceil": math.Ceil, "math.trunc": math.Trunc}[f.path](x)), true, nil
	case "math.sqrt", "math.log", "math.log2", "math.log10", "math.exp", "math.fabs":
		if x, ok := num(0); ok && len(args) == 1 {
			return map[string]func(float64) float64{"math.sqrt": math.Sqrt, "math.log": math.Log, "math.log2": math.Log2, "math.log10": math.Log10, "math.exp": math.Exp, "math.fabs": math.Abs}[f.path](x), true, nil
		}
	case "math.pow":
		x, ok1 := num(0)
		y, ok2 := num(1)
		if ok1 && ok2 {
			return math.Pow(x, y), true, nil
		}
	case "math.isqrt":
		if x, ok := arg(0).(integer); ok && x >= 0 {
			return integer(new(big.Int).Sqrt(big.NewInt(int64(x))).Int64()), true, nil
		}
	case "math.gcd":
		g := new(big.Int)
		for _, a := range args {
			n, ok := a.(integer)
			if !ok {
				return wrong()
			}
			g.GCD(nil, nil, g, new(big.Int).Abs(big.NewInt(int64(n))))
		}
		return integer(g.Int64()), true, nil
	case "itertools.islice":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil {
			return nil, true, err
		}
		from, to, step := 0, len(items), 1
		at := func(i, def int) int {
			if n, ok := arg(i).(integer); ok {
				return int(n)
			}
			return def
		}
		if len(args) == 2 {
			to = at(1, to)
		} else {
			from, to, step = at(1, 0), at(2, to), at(3, 1)
		}
		if from < 0 || to < 0 || step < 1 {
			return nil, true, raise("ValueError", "indices for islice() must be positive")
		}
		l := &list{}
		for i := from; i < min(to, len(items)); i += step {
			l.items = append(l.items, items[i])
		}
		return l, true, nil
	case "itertools.accumulate":
		items, err := m.items(arg(0), m.topOf(at))
		if err != nil || len(args) > 1 || len(keys) > 0 {
			return nil, err != nil, err
		}
		l := &list{}
		for i, x := range items {
			if i > 0 {
				if x, err = pyOperate("+", l.items[i-1], x); err != nil {
					return nil, true, err
				}
			}
			l.items = append(l.items, x)
		}
		return l, true, nil
	case "itertools.repeat":
		if n, ok := arg(1).(integer); ok && n >= 0 && n <= maxItems {
			l := &list{}
			for range int(n) {
				l.items = append(l.items, arg(0))
			}
			return l, true, nil
		}
	case "os.path.splitext":
		if t, ok := arg(0).(string); ok {
			ext := path.Ext(t)
			if strings.TrimLeft(path.Base(t), ".") == strings.TrimPrefix(ext, ".") { // a name that begins with a point
				ext = ""
			}
			return &list{items: []any{strings.TrimSuffix(t, ext), ext}, tuple: true}, true, nil
		}
	case "os.path.expandvars":
		if c, ok := arg(0).(*content); ok && c.text != "" && len(args) == 1 {
			args = []any{c.text}
		}
		if t, ok := arg(0).(string); ok {
			out := expand(t, func(name string) string {
				if v, ok := m.lookup(name, at); ok {
					return v
				}
				return "$" + name
			})
			return out, true, nil
		}
	case "collections.deque":
		l := &list{}
		if len(args) > 0 {
			items, err := m.items(arg(0), m.topOf(at))
			if err != nil {
				return nil, true, err
			}
			l.items = slices.Clone(items)
		}
		if len(args) > 1 || len(keys) > 0 {
			return nil, false, nil
		}
		return l, true, nil
	}
	return nil, false, nil
}

// spacedJSON puts a blank behind each comma and colon of a text of JSON, as json.dumps
// does.
func spacedJSON(t string) string {
	var b strings.Builder
	in := false
	for i := 0; i < len(t); i++ {
		b.WriteByte(t[i])
		switch {
		case t[i] == '\\' && in && i+1 < len(t):
			i++
			b.WriteByte(t[i])
		case t[i] == '"':
			in = !in
		case !in && (t[i] == ',' || t[i] == ':'):
			b.WriteByte(' ')
		}
	}
	return b.String()
}

// pyLess compares two values of Python as sorting does; ok is false where they have no
// order.
func pyLess(x, y any) (n int, ok bool) {
	if a, isText := x.(string); isText {
		b, also := y.(string)
		return strings.Compare(a, b), also
	}
	if a, isList := x.(*list); isList {
		b, also := y.(*list)
		if !also {
			return 0, false
		}
		for i := range min(len(a.items), len(b.items)) {
			if n, ok := pyLess(a.items[i], b.items[i]); !ok || n != 0 {
				return n, ok
			}
		}
		return compare(float64(len(a.items)), float64(len(b.items))), true
	}
	for _, v := range []any{x, y} {
		switch v.(type) {
		case integer, float64, bool:
		default:
			return 0, false
		}
	}
	p, _ := toNumber(x)
	q, _ := toNumber(y)
	return compare(p, q), true
}

// pyPart is the part of a text that the second and the third argument of its methods name,
// and where it begins (Python 3.14, "Text Sequence Type", str.find).
func pyPart(text string, args []any) (from int, part string, ok bool) {
	to := len(text)
	for i, p := range []*int{&from, &to} {
		if len(args) <= i+1 || args[i+1] == nil {
			continue
		}
		n, whole := args[i+1].(integer)
		if !whole {
			return 0, "", false
		}
		k := int(n)
		if k < 0 {
			k += len(text)
		}
		*p = min(max(k, 0), len(text))
	}
	if to < from || strings.IndexFunc(text, func(r rune) bool { return r > 127 }) >= 0 && len(args) > 1 {
		return from, "", to >= from
	}
	return from, text[from:to], true
}
