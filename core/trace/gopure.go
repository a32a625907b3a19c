package trace

import (
	"math"
	"math/bits"
	"net/url"
	"path"
	"path/filepath"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// goPure are functions of Go's library that make a value of what they are given and do
// nothing else: they are called as they are (Go 1.26).
var goPure = map[string]any{
	"path.Clean": path.Clean, "path.Dir": path.Dir, "path.IsAbs": path.IsAbs, "path.Split": path.Split, "path.Match": path.Match,
	"path/filepath.Clean": filepath.Clean, "path/filepath.Dir": filepath.Dir, "path/filepath.IsAbs": filepath.IsAbs, "path/filepath.Split": filepath.Split, "path/filepath.ToSlash": filepath.ToSlash, "path/filepath.FromSlash": filepath.FromSlash, "path/filepath.Match": filepath.Match, "path/filepath.SplitList": filepath.SplitList,
	"strconv.FormatBool": strconv.FormatBool, "strconv.FormatFloat": strconv.FormatFloat, "strconv.Unquote": strconv.Unquote, "strconv.QuoteRune": strconv.QuoteRune,
	"strings.LastIndexAny": strings.LastIndexAny, "strings.ToValidUTF8": strings.ToValidUTF8,
	"net/url.QueryEscape": url.QueryEscape, "net/url.PathEscape": url.PathEscape, "net/url.QueryUnescape": url.QueryUnescape, "net/url.PathUnescape": url.PathUnescape,
	"unicode.IsControl": unicode.IsControl, "unicode.IsPrint": unicode.IsPrint, "unicode.IsSymbol": unicode.IsSymbol, "unicode.IsTitle": unicode.IsTitle, "unicode.IsGraphic": unicode.IsGraphic, "unicode.ToTitle": unicode.ToTitle,
	"unicode/utf8.RuneCountInString": utf8.RuneCountInString, "unicode/utf8.ValidString": utf8.ValidString, "unicode/utf8.RuneLen": utf8.RuneLen, "unicode/utf8.ValidRune": utf8.ValidRune, "unicode/utf8.DecodeRuneInString": utf8.DecodeRuneInString, "unicode/utf8.DecodeLastRuneInString": utf8.DecodeLastRuneInString,
	"bytes.Contains": strings.Contains, "bytes.HasPrefix": strings.HasPrefix, "bytes.HasSuffix": strings.HasSuffix, "bytes.Equal": func(a, b string) bool { return a == b }, "bytes.EqualFold": strings.EqualFold, "bytes.Count": strings.Count,
	"regexp.QuoteMeta": regexp.QuoteMeta,
	"math.Mod":         math.Mod, "math.Log": math.Log, "math.Log2": math.Log2, "math.Log10": math.Log10, "math.Exp": math.Exp, "math.Hypot": math.Hypot, "math.Cbrt": math.Cbrt, "math.Sin": math.Sin, "math.Cos": math.Cos, "math.IsNaN": math.IsNaN, "math.IsInf": math.IsInf, "math.Inf": math.Inf, "math.NaN": math.NaN, "math.Signbit": math.Signbit, "math.Exp2": math.Exp2, "math.Pow10": math.Pow10,
	"math/bits.Len": bits.Len, "math/bits.OnesCount": bits.OnesCount, "math/bits.LeadingZeros": bits.LeadingZeros, "math/bits.TrailingZeros": bits.TrailingZeros, "math/bits.Len16": bits.Len16, "math/bits.Len32": bits.Len32, "math/bits.Len64": bits.Len64, "math/bits.ReverseBytes16": bits.ReverseBytes16, "math/bits.Reverse16": bits.Reverse16,
}

// goPurely calls a function of goPure; done is false where it is none, or where what it
// is given is not known.
func (m *machine) goPurely(p string, args []goValue) (list []goValue, done bool, err error) {
	f, ok := goPure[p]
	if !ok {
		return nil, false, nil
	}
	fn := reflect.ValueOf(f)
	t := fn.Type()
	if t.NumIn() != len(args) {
		return nil, false, nil
	}
	var in []reflect.Value
	for i, a := range args {
		v, ok := goNative(a, t.In(i))
		if !ok {
			return nil, false, nil
		}
		in = append(in, v)
	}
	for _, v := range fn.Call(in) {
		out, ok := m.goOwn(v)
		if !ok {
			return nil, false, nil
		}
		if out.v == nil { // what went well
			out.t = nil
		}
		list = append(list, out)
	}
	return list, true, nil
}

// goNative is a value of the program as one of this program's.
func goNative(a goValue, t reflect.Type) (reflect.Value, bool) {
	switch t.Kind() {
	case reflect.String:
		switch x := a.v.(type) {
		case string:
			return reflect.ValueOf(x), true
		case *content:
			return reflect.ValueOf(x.text), true
		}
	case reflect.Float64:
		switch x := a.v.(type) {
		case float64:
			return reflect.ValueOf(x), true
		case integer:
			return reflect.ValueOf(float64(x)), true
		}
	case reflect.Bool:
		if x, ok := a.v.(bool); ok {
			return reflect.ValueOf(x), true
		}
	case reflect.Int, reflect.Int32, reflect.Int64, reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		if x, ok := a.v.(integer); ok {
			return reflect.ValueOf(int64(x)).Convert(t), true
		}
	}
	return reflect.Value{}, false
}

// goOwn is a value of this program as one of the program's.
func (m *machine) goOwn(v reflect.Value) (goValue, bool) {
	switch v.Kind() {
	case reflect.String:
		return goValue{v.String(), tString}, true
	case reflect.Bool:
		return goValue{v.Bool(), tBool}, true
	case reflect.Float64:
		return goValue{v.Float(), tFloat}, true
	case reflect.Int32:
		return goValue{integer(v.Int()), tRune}, true
	case reflect.Int, reflect.Int64:
		return goValue{integer(v.Int()), tInt}, true
	case reflect.Uint, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		return goValue{integer(v.Uint()), goBasic[v.Kind().String()]}, true
	case reflect.Slice:
		l := &goList{}
		for i := range min(v.Len(), maxItems) {
			x, ok := m.goOwn(v.Index(i))
			if !ok {
				return goValue{}, false
			}
			l.a = append(l.a, &goCell{v: x, t: x.t})
		}
		return goValue{l, tStrings}, true
	case reflect.Interface:
		if v.IsNil() {
			return goValue{}, true
		}
		if e, ok := v.Interface().(error); ok {
			return goValue{&goFault{msg: e.Error()}, tFault}, true
		}
	}
	return goValue{}, false
}

// goListing are what goes through lists and maps in packages slices and maps, with
// functions that are handed over: they call goHelped.
type goListing struct {
	m       *machine
	holds   func(fn goValue, args ...goValue) (bool, error)
	calls   func(fn goValue, args ...goValue) (goValue, error)
	natural func(x, y goValue) (bool, error)
	items   func(i int) ([]*goCell, bool)
}

// helped calls a function of package slices or maps; done is false for any other.
func (g *goListing) helped(p string, args []goValue) (list []goValue, done bool, err error) {
	arg := func(i int) goValue {
		if i < len(args) {
			return args[i]
		}
		return goValue{}
	}
	order := func(fn goValue, x, y goValue) (int, error) {
		v, err := g.calls(fn, x, y)
		n, ok := v.v.(integer)
		if err == nil && !ok {
			err = undecided("an order that is not known")
		}
		return int(n), err
	}
	give := func(v any, t *goType) ([]goValue, bool, error) { return []goValue{{v, t}}, true, nil }
	if table, ok := arg(0).v.(*goTable); ok && p == "maps.DeleteFunc" {
		for _, k := range slices.Clone(table.keys) {
			e := table.m[k]
			yes, err := g.holds(arg(1), e.k, e.c.v)
			if err != nil {
				return nil, true, err
			}
			if yes {
				delete(table.m, k)
				table.keys = slices.DeleteFunc(table.keys, func(x any) bool { return x == k })
			}
		}
		return nil, true, nil
	}
	if n, ok := arg(0).v.(integer); ok && p == "sort.Search" { // the first of so many for which it holds
		for i := integer(0); i < min(n, maxItems); i++ {
			if yes, err := g.holds(arg(1), goValue{i, tInt}); err != nil || yes {
				return []goValue{{i, tInt}}, true, err
			}
		}
		return give(n, tInt)
	}
	a, ok := g.items(0)
	if !ok {
		return nil, false, nil
	}
	made := func(cells []*goCell) ([]goValue, bool, error) {
		return []goValue{{&goList{a: cells}, arg(0).t}}, true, g.m.use(len(cells))
	}
	switch p {
	case "slices.DeleteFunc":
		var kept []*goCell
		for _, c := range a {
			yes, err := g.holds(arg(1), c.v)
			if err != nil {
				return nil, true, err
			}
			if !yes {
				kept = append(kept, c)
			}
		}
		return made(kept)
	case "slices.Insert", "slices.Delete":
		n, ok := arg(1).v.(integer)
		if !ok || n < 0 || int(n) > len(a) {
			return nil, false, nil
		}
		if p == "slices.Delete" {
			end, ok := arg(2).v.(integer)
			if !ok || end < n || int(end) > len(a) {
				return nil, false, nil
			}
			return made(slices.Delete(slices.Clone(a), int(n), int(end)))
		}
		var more []*goCell
		for _, v := range args[2:] {
			more = append(more, &goCell{v: goCopy(v)})
		}
		return made(slices.Insert(slices.Clone(a), int(n), more...))
	case "slices.MaxFunc", "slices.MinFunc":
		if len(a) == 0 {
			return nil, false, nil
		}
		best := a[0].v
		for _, c := range a[1:] {
			n, err := order(arg(1), c.v, best)
			if err != nil {
				return nil, true, err
			}
			if n > 0 && p == "slices.MaxFunc" || n < 0 && p == "slices.MinFunc" {
				best = c.v
			}
		}
		return []goValue{best}, true, nil
	case "slices.IsSorted", "slices.IsSortedFunc", "sort.StringsAreSorted", "sort.IntsAreSorted":
		for i := 1; i < len(a); i++ {
			less := false
			if p == "slices.IsSortedFunc" {
				n, err := order(arg(1), a[i].v, a[i-1].v)
				if err != nil {
					return nil, true, err
				}
				less = n < 0
			} else if less, err = g.natural(a[i].v, a[i-1].v); err != nil {
				return nil, true, err
			}
			if less {
				return give(false, tBool)
			}
		}
		return give(true, tBool)
	case "slices.BinarySearch", "sort.SearchStrings", "sort.SearchInts":
		at := len(a)
		for i, c := range a {
			less, err := g.natural(c.v, arg(1))
			if err != nil {
				return nil, true, err
			}
			if !less {
				at = i
				break
			}
		}
		if p != "slices.BinarySearch" {
			return give(integer(at), tInt)
		}
		found := false
		if at < len(a) {
			if found, ok = g.m.goSame(a[at].v, arg(1), nil); !ok {
				return nil, false, nil
			}
		}
		return []goValue{{integer(at), tInt}, {found, tBool}}, true, nil
	case "slices.Repeat":
		n, ok := arg(1).v.(integer)
		if !ok || n < 0 || int(n)*len(a) > maxItems {
			return nil, false, nil
		}
		var out []*goCell
		for range n {
			for _, c := range a {
				out = append(out, &goCell{v: goCopy(c.v), t: c.t})
			}
		}
		return made(out)
	case "slices.CompactFunc":
		var out []*goCell
		for _, c := range a {
			if len(out) > 0 {
				same, err := g.holds(arg(1), out[len(out)-1].v, c.v)
				if err != nil {
					return nil, true, err
				}
				if same {
					continue
				}
			}
			out = append(out, c)
		}
		return made(out)
	case "slices.EqualFunc":
		b, ok := g.items(1)
		if !ok || len(a) != len(b) {
			return []goValue{{false, tBool}}, ok, nil
		}
		for i := range a {
			same, err := g.holds(arg(2), a[i].v, b[i].v)
			if err != nil || !same {
				return []goValue{{false, tBool}}, true, err
			}
		}
		return give(true, tBool)
	case "slices.Grow", "slices.Clip":
		return []goValue{arg(0)}, true, nil
	}
	return nil, false, nil
}
