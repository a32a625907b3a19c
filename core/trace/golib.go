package trace

import (
	"cmp"
	"encoding/json"
	"go/token"
	"math"
	"net/netip"
	"path"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"ubique/core/value"
)

// What the library of Go does with lists, maps, functions, errors and data (package
// documentation of Go 1.26: errors, fmt, maps, reflect, slices, sort, strconv,
// strings, sync, sync/atomic, encoding/json).

// goConstants are constants of the library.
var goConstants = map[string]goValue{
	"time.Nanosecond": {integer(1), tLength}, "time.Microsecond": {integer(1_000), tLength}, "time.Millisecond": {integer(1_000_000), tLength}, "time.Second": {integer(1_000_000_000), tLength}, "time.Minute": {integer(60_000_000_000), tLength}, "time.Hour": {integer(3_600_000_000_000), tLength},
	"math.MaxInt": {integer(math.MaxInt64), tUntyped}, "math.MaxInt64": {integer(math.MaxInt64), tUntyped}, "math.MaxInt32": {integer(math.MaxInt32), tUntyped}, "math.MaxInt16": {integer(math.MaxInt16), tUntyped}, "math.MaxUint16": {integer(math.MaxUint16), tUntyped}, "math.MaxUint8": {integer(math.MaxUint8), tUntyped}, "math.MinInt64": {integer(math.MinInt64), tUntyped}, "math.MaxUint32": {integer(math.MaxUint32), tUntyped}, "math.Pi": {math.Pi, tUntyped},
	"net/http.MethodGet": {"GET", tUntyped}, "net/http.MethodPost": {"POST", tUntyped}, "os.PathSeparator": {integer('/'), tRuneConstant}, "runtime.GOOS": {"linux", tUntyped},
	"reflect.Invalid": {integer(0), tReflectKind}, "reflect.Bool": {integer(1), tReflectKind}, "reflect.Int": {integer(2), tReflectKind}, "reflect.Int8": {integer(3), tReflectKind}, "reflect.Int16": {integer(4), tReflectKind}, "reflect.Int32": {integer(5), tReflectKind}, "reflect.Int64": {integer(6), tReflectKind}, "reflect.Uint": {integer(7), tReflectKind}, "reflect.Uint8": {integer(8), tReflectKind}, "reflect.Uint16": {integer(9), tReflectKind}, "reflect.Uint32": {integer(10), tReflectKind}, "reflect.Uint64": {integer(11), tReflectKind},
	"reflect.Float32": {integer(13), tReflectKind}, "reflect.Float64": {integer(14), tReflectKind}, "reflect.Array": {integer(17), tReflectKind}, "reflect.Chan": {integer(18), tReflectKind}, "reflect.Func": {integer(19), tReflectKind}, "reflect.Interface": {integer(20), tReflectKind}, "reflect.Map": {integer(21), tReflectKind}, "reflect.Pointer": {integer(22), tReflectKind}, "reflect.Ptr": {integer(22), tReflectKind}, "reflect.Slice": {integer(23), tReflectKind}, "reflect.String": {integer(24), tReflectKind}, "reflect.Struct": {integer(25), tReflectKind},
}

// tIP is net.IP, which a program compares with nil and hands on.
var tIP = &goType{kind: goString, name: "net.IP"}

// tAddr and tAddrPort are those of net/netip, kept as their texts.
var (
	tAddr     = &goType{kind: goString, name: "net/netip.Addr"}
	tAddrPort = &goType{kind: goString, name: "net/netip.AddrPort"}
)

// goAddress is what an address that is kept as its text does.
func goAddress(base goValue, name string) *goClosure {
	t, ok := base.v.(string)
	if !ok || base.t != tIP && base.t != tAddr && base.t != tAddrPort {
		return nil
	}
	give := func(v any, t *goType) *goClosure {
		return &goClosure{name: name, native: func(*machine, []goValue, spot) ([]goValue, error) { return []goValue{{v, t}}, nil }}
	}
	switch name {
	case "String":
		return give(t, tString)
	case "IsValid":
		return give(t != "", tBool)
	}
	if base.t == tAddrPort {
		if p, err := netip.ParseAddrPort(t); err == nil && name == "Port" {
			return give(integer(p.Port()), goBasic["uint16"])
		} else if err == nil && name == "Addr" {
			return give(p.Addr().String(), tAddr)
		}
		return nil
	}
	a, err := netip.ParseAddr(t)
	if err != nil {
		return nil
	}
	switch name {
	case "Is4":
		return give(a.Is4(), tBool)
	case "Is6":
		return give(a.Is6(), tBool)
	case "IsLoopback":
		return give(a.IsLoopback(), tBool)
	case "IsUnspecified":
		return give(a.IsUnspecified(), tBool)
	}
	return nil
}

var tReflectKind = &goType{kind: goInt, name: "reflect.Kind", bits: 64, unsigned: true}

// goLibrary calls what the library does with values that the rest of the package
// does not have; done is false for all else.
func (m *machine) goLibrary(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	arg := func(i int) goValue {
		if i < len(args) {
			return args[i]
		}
		return goValue{}
	}
	give := func(v any, t *goType) ([]goValue, bool, error) { return []goValue{{v, t}}, true, nil }
	unknown := func(i int) *opaque { o, _ := arg(i).v.(*opaque); return o }
	items := func(i int) ([]*goCell, bool) {
		switch x := arg(i).v.(type) {
		case *goList:
			return x.a, true
		case *goRow:
			return x.a, true
		case *goCell:
			if r, ok := x.v.v.(*goRow); ok {
				return r.a, true
			}
		case *goSequence:
			var a []*goCell
			for _, p := range x.items {
				a = append(a, &goCell{v: p[0]})
			}
			return a, true
		case nil:
			return nil, true
		}
		return nil, false
	}
	calls := func(fn goValue, args ...goValue) (goValue, error) {
		out, err := m.goApply(fn, args, at, s)
		if err != nil || len(out) == 0 {
			return goValue{}, err
		}
		return out[0], nil
	}
	holds := func(fn goValue, args ...goValue) (bool, error) {
		v, err := calls(fn, args...)
		if err != nil {
			return false, err
		}
		return m.goHolds(v, nil)
	}
	text := func(i int) (string, bool) {
		switch x := arg(i).v.(type) {
		case string:
			return x, true
		case *content:
			return x.text, true
		}
		return "", false
	}
	sortBy := func(a []*goCell, less func(x, y goValue) (bool, error)) error {
		values := make([]goValue, len(a))
		for i, c := range a {
			values[i] = c.v
		}
		var failed error
		slices.SortStableFunc(values, func(x, y goValue) int {
			if failed != nil {
				return 0
			}
			if yes, err := less(x, y); err != nil || yes {
				failed = cmp.Or(failed, err)
				return -1
			}
			if yes, err := less(y, x); err != nil || yes {
				failed = cmp.Or(failed, err)
				return 1
			}
			return 0
		})
		for i, c := range a {
			c.v = values[i]
		}
		return failed
	}
	natural := func(x, y goValue) (bool, error) {
		v, err := m.goOperate(token.LSS, x, y, nil, s)
		if err != nil {
			return false, err
		}
		return m.goHolds(v, nil)
	}
	p := f.path
	if f.self != nil {
		if list, done, err := m.goShared(f, args, at, s); done || err != nil {
			return list, done, err
		}
	}
	switch p {
	case "errors.New":
		t, ok := text(0)
		if !ok {
			t = "an error"
		}
		return give(&goFault{msg: t, own: true}, tFault)
	case "fmt.Errorf":
		format, ok := text(0)
		if !ok {
			return give(&goFault{own: true, msg: "an error"}, tFault)
		}
		t, causes, err := m.goSprintf(format, args[1:], at)
		if err != nil {
			return nil, true, err
		}
		msg, ok := t.(string)
		if !ok {
			msg = "an error"
			for _, v := range args[1:] {
				if _, isFault := v.v.(*goFault); isFault {
					causes = append(causes, v)
				}
			}
		}
		return give(&goFault{own: true, msg: msg, causes: causes}, tFault)
	case "errors.Join":
		var causes []goValue
		var parts []string
		for _, v := range args {
			if v.v != nil {
				causes = append(causes, v)
				t, _, err := m.goText(v, at, 0)
				if err != nil {
					return nil, true, err
				}
				parts = append(parts, t)
			}
		}
		if causes == nil {
			return give(nil, nil)
		}
		return give(&goFault{msg: strings.Join(parts, "\n"), causes: causes}, tFault)
	case "errors.Is", "errors.As":
		return m.goChain(p, arg(0), arg(1), at)
	case "errors.Unwrap":
		next, err := m.goCauses(arg(0), at)
		if err != nil || len(next) != 1 {
			return []goValue{{nil, nil}}, true, err
		}
		return next, true, nil
	case "os.IsNotExist":
		if arg(0).v == nil {
			return give(false, tBool)
		}
		return m.goChain("errors.Is", arg(0), goValue{m.package1("os.ErrNotExist"), nil}, at)
	case "fmt.Sprintf", "fmt.Sprint", "fmt.Sprintln":
		var t any
		if p == "fmt.Sprintf" {
			format, ok := text(0)
			if !ok {
				return give(dontKnow("a format"), tString)
			}
			if t, _, err = m.goSprintf(format, args[1:], at); err != nil {
				return nil, true, err
			}
		} else if t, err = m.goPrinted(args, p == "fmt.Sprintln", at); err != nil {
			return nil, true, err
		}
		if x, ok := t.(string); ok && p == "fmt.Sprintln" {
			t = x + "\n"
		}
		return give(t, tString)
	case "fmt.Fprintf", "fmt.Fprint", "fmt.Fprintln":
		o, ok := arg(0).v.(*object)
		if !ok || o.class == nil || o.class.name != "strings.Builder" && o.class.name != "bytes.Buffer" {
			return nil, true, nil
		}
		list, _, err := m.goLibrary(&opaque{path: "fmt.S" + p[len("fmt.F"):]}, args[1:], at, s)
		if err != nil {
			return nil, true, err
		}
		_, _, err = m.goShared(&opaque{path: o.class.name + ".WriteString", self: o}, list, at, s)
		return []goValue{{integer(0), tInt}, {nil, nil}}, true, err
	case "fmt.Println", "fmt.Printf", "fmt.Print", "log.Println", "log.Printf", "log.Print", "log/slog.Info", "log/slog.Debug", "log/slog.Warn", "log/slog.Error":
		return []goValue{{integer(0), tInt}, {nil, nil}}, true, nil
	case "log.Panic", "log.Panicf", "log.Panicln":
		return nil, true, &goPanic{v: goValue{"panic", tString}}
	case "fmt.Sscan", "fmt.Sscanln", "fmt.Sscanf":
		t, ok := text(0)
		format, vars := "", args[min(1, len(args)):]
		if p == "fmt.Sscanf" && ok && len(args) > 1 {
			format, ok = text(1)
			vars = args[2:]
		}
		if !ok {
			return nil, true, undecided("what %s reads", p)
		}
		list, err = goScan(p, t, format, vars)
		return list, true, err
	case "strconv.Atoi", "strconv.ParseInt", "strconv.ParseUint", "strconv.ParseFloat", "strconv.ParseBool":
		t, ok := text(0)
		if !ok {
			return nil, false, nil
		}
		var v any
		var problem error
		kind := tInt
		base, bits := 10, 64
		if n, ok := arg(1).v.(integer); ok {
			base = int(n)
		}
		if n, ok := arg(2).v.(integer); ok && n <= 64 {
			bits = int(n)
		}
		switch p {
		case "strconv.Atoi":
			n, e := strconv.Atoi(t)
			v, problem = integer(n), e
		case "strconv.ParseInt":
			n, e := strconv.ParseInt(t, base, bits)
			v, problem, kind = integer(n), e, goBasic["int64"]
		case "strconv.ParseUint":
			n, e := strconv.ParseUint(t, base, bits)
			v, problem, kind = integer(n), e, goBasic["uint64"]
		case "strconv.ParseFloat":
			n, e := strconv.ParseFloat(t, 64)
			v, problem, kind = n, e, tFloat
		default:
			b, e := strconv.ParseBool(t)
			v, problem, kind = b, e, tBool
		}
		if problem == nil {
			return []goValue{{v, kind}, {nil, nil}}, true, nil
		}
		cause := "strconv.ErrSyntax"
		if strings.HasSuffix(problem.Error(), "out of range") {
			cause = "strconv.ErrRange"
		}
		fault := &goFault{msg: problem.Error(), causes: []goValue{{m.package1(cause), nil}}, path: "strconv.NumError"}
		return []goValue{{v, kind}, {fault, tFault}}, true, nil
	case "path.Base", "path/filepath.Base", "path.Ext", "path/filepath.Ext":
		if t, ok := text(0); ok {
			if strings.HasSuffix(p, "Ext") {
				return give(path.Ext(t), tString)
			}
			return give(path.Base(t), tString)
		}
	case "net/netip.IPv4Unspecified":
		return give("0.0.0.0", tAddr)
	case "net/netip.IPv6Unspecified":
		return give("::", tAddr)
	case "net/netip.IPv6Loopback":
		return give("::1", tAddr)
	case "net/netip.ParseAddr", "net/netip.MustParseAddr", "net/netip.ParseAddrPort", "net/netip.MustParseAddrPort":
		t, ok := text(0)
		if !ok {
			return nil, false, nil
		}
		kind, said := tAddr, ""
		a, e := netip.ParseAddr(t)
		if said = a.String(); strings.HasSuffix(p, "Port") {
			var ap netip.AddrPort
			kind = tAddrPort
			ap, e = netip.ParseAddrPort(t)
			said = ap.String()
		}
		switch {
		case e != nil && strings.Contains(p, "Must"):
			return nil, true, &goPanic{goValue{&goFault{msg: e.Error()}, tFault}, false}
		case strings.Contains(p, "Must"):
			return give(said, kind)
		case e != nil:
			return []goValue{{"", kind}, {&goFault{msg: e.Error()}, tFault}}, true, nil
		}
		return []goValue{{said, kind}, {nil, nil}}, true, nil
	case "net/netip.AddrPortFrom":
		t, ok := text(0)
		n, isNumber := arg(1).v.(integer)
		a, e := netip.ParseAddr(t)
		if ok && isNumber && e == nil {
			return give(netip.AddrPortFrom(a, uint16(n)).String(), tAddrPort)
		}
	case "net.TCPAddrFromAddrPort":
		if t, ok := text(0); ok {
			return give(&opaque{path: "net.ResolveTCPAddr()", args: []any{"tcp", t}, fresh: true}, nil)
		}
	case "net.ParseIP": // an address is kept as its text
		if t, ok := text(0); ok {
			a, e := netip.ParseAddr(t)
			if e != nil || a.Zone() != "" {
				return give(nil, tIP)
			}
			return give(a.String(), tIP)
		}
	case "time.ParseDuration":
		t, ok := text(0)
		if !ok {
			return nil, false, nil
		}
		d, e := time.ParseDuration(t)
		if e != nil {
			return []goValue{{integer(0), tLength}, {&goFault{msg: e.Error()}, tFault}}, true, nil
		}
		return []goValue{{integer(d), tLength}, {nil, nil}}, true, nil
	case "io/fs.Sub": // of files that are built in
		if o := unknown(0); o != nil && o.path == "embed.FS" {
			if dir, ok := text(1); ok {
				return []goValue{{&opaque{path: o.path, args: []any{path.Join(show(o.args[0]), dir)}}, nil}, {nil, nil}}, true, nil
			}
		}
	case "os.ReadFile", "io/ioutil.ReadFile", "os.Open", "embed.FS.ReadFile", "embed.FS.Open", "io/fs.ReadFile":
		named, of := arg(0), 0
		built := f.recv
		if p == "io/fs.ReadFile" {
			if built = unknown(0); built == nil {
				return nil, false, nil
			}
			named, of = arg(1), 1
		}
		file := m.goOld(named, 0)
		if built != nil && built.path == "embed.FS" && len(built.args) == 1 {
			if t, ok := text(of); ok {
				file = root + "/" + path.Join(show(built.args[0]), t)
			}
		}
		switch x := m.readFile(file).(type) {
		case *thrown:
			name, _ := text(of)
			return []goValue{{nil, tBytes}, {&goFault{msg: "open " + name + ": no such file or directory", causes: []goValue{{m.package1("os.ErrNotExist"), nil}}, path: "io/fs.PathError"}, tFault}}, true, nil
		case *content:
			return []goValue{{x, tBytes}, {nil, nil}}, true, nil
		}
		return []goValue{{dontKnow("a file"), nil}, {nil, nil}}, true, nil
	case "os.Stat":
		if o := unknown(0); o == nil {
			if _, ok := m.readFile(m.goOld(arg(0), 0)).(*thrown); ok {
				return []goValue{{nil, nil}, {&goFault{msg: "no such file or directory", causes: []goValue{{m.package1("os.ErrNotExist"), nil}}, path: "io/fs.PathError"}, tFault}}, true, nil
			}
			return []goValue{{dontKnow("a file"), nil}, {nil, nil}}, true, nil
		}
	case "cmp.Or":
		for _, v := range args {
			if o, ok := v.v.(*opaque); ok {
				return give(dontKnow("what is made of "+o.String()), v.t)
			}
			z, err := m.goZero(v.t, s)
			if err != nil {
				return nil, true, err
			}
			if same, ok := m.goSame(v, z, nil); !ok {
				return nil, true, undecided("whether a value is zero")
			} else if !same {
				return []goValue{v}, true, nil
			}
		}
		return args[max(0, len(args)-1):], true, nil
	case "cmp.Compare", "strings.Compare":
		a, err := natural(arg(0), arg(1))
		if err != nil {
			return nil, true, err
		}
		b, err := natural(arg(1), arg(0))
		return []goValue{{integer(map[bool]int{true: 1}[b] - map[bool]int{true: 1}[a]), tInt}}, true, err
	case "slices.Contains", "slices.Index", "slices.ContainsFunc", "slices.IndexFunc":
		a, ok := items(0)
		if !ok {
			return give(dontKnow("whether a list holds something"), nil)
		}
		found := -1
		for i, c := range a {
			var yes bool
			if strings.HasSuffix(p, "Func") {
				var err error
				if yes, err = holds(arg(1), c.v); err != nil {
					return nil, true, err
				}
			} else if yes, ok = m.goSame(c.v, arg(1), nil); !ok {
				return give(dontKnow("whether a list holds something"), nil)
			}
			if yes {
				found = i
				break
			}
		}
		if strings.HasPrefix(p, "slices.Index") {
			return give(integer(found), tInt)
		}
		return give(found >= 0, tBool)
	case "sort.Strings", "sort.Ints", "sort.Float64s", "slices.Sort":
		if a, ok := items(0); ok {
			return nil, true, sortBy(a, natural)
		}
		return nil, true, undecided("a list that is not known")
	case "slices.SortFunc", "slices.SortStableFunc":
		if a, ok := items(0); ok {
			return nil, true, sortBy(a, func(x, y goValue) (bool, error) {
				v, err := calls(arg(1), x, y)
				n, ok := v.v.(integer)
				if err == nil && !ok {
					err = undecided("an order that is not known")
				}
				return n < 0, err
			})
		}
		return nil, true, undecided("a list that is not known")
	case "sort.Slice", "sort.SliceStable":
		a, ok := items(0)
		if !ok {
			return nil, true, undecided("a list that is not known")
		}
		for i := 1; i < len(a); i++ { // by places, which the function is given
			for j := i; j > 0; j-- {
				yes, err := holds(arg(1), goValue{integer(j), tInt}, goValue{integer(j - 1), tInt})
				if err != nil {
					return nil, true, err
				}
				if !yes {
					break
				}
				a[j].v, a[j-1].v = a[j-1].v, a[j].v
			}
		}
		return nil, true, nil
	case "sort.Sort", "sort.Stable":
		method := func(name string, args ...goValue) (goValue, error) {
			fn, _, err := m.goMember(arg(0), nil, name, s, nil)
			if err != nil {
				return goValue{}, err
			}
			return calls(fn, args...)
		}
		size, err := method("Len")
		if err != nil {
			return nil, true, err
		}
		n, ok := size.v.(integer)
		if !ok || n > 256 {
			return nil, true, undecided("a list that is not known")
		}
		for i := integer(1); i < n; i++ {
			for j := i; j > 0; j-- {
				v, err := method("Less", goValue{j, tInt}, goValue{j - 1, tInt})
				if err != nil {
					return nil, true, err
				}
				if yes, err := m.goHolds(v, nil); err != nil {
					return nil, true, err
				} else if !yes {
					break
				}
				if _, err := method("Swap", goValue{j, tInt}, goValue{j - 1, tInt}); err != nil {
					return nil, true, err
				}
			}
		}
		return nil, true, nil
	case "os.Expand":
		t, ok := text(0)
		if !ok {
			return nil, false, nil
		}
		var failed error
		out := expand(t, func(k string) string {
			v, err := calls(arg(1), goValue{k, tString})
			w, ok := v.v.(string)
			if err == nil && !ok {
				err = undecided("a text that is not known")
			}
			failed = cmp.Or(failed, err)
			return w
		})
		return []goValue{{out, tString}}, true, failed
	case "slices.Reverse":
		if a, ok := items(0); ok {
			for i, j := 0, len(a)-1; i < j; i, j = i+1, j-1 {
				a[i].v, a[j].v = a[j].v, a[i].v
			}
			return nil, true, nil
		}
	case "maps.Collect":
		seq, ok := arg(0).v.(*goSequence)
		if !ok {
			break
		}
		w := newTable()
		t := &goType{kind: goMap, key: tString}
		for _, pair := range seq.items {
			if len(pair) != 2 {
				return nil, true, giveUp("pairs of a map")
			}
			w.set(pair[0], pair[1], pair[1].t)
			t.key, t.elem = pair[0].t, pair[1].t
		}
		return give(w, t)
	case "slices.Clone", "slices.Collect", "slices.Sorted", "slices.Compact", "slices.Concat":
		l := &goList{}
		t := arg(0).t
		for i := range args {
			a, ok := items(i)
			if !ok {
				return give(dontKnow("a list that is not known"), nil)
			}
			for _, c := range a {
				l.a = append(l.a, &goCell{v: goCopy(c.v), t: c.t})
			}
		}
		if !t.is(goSlice) {
			t = tStrings
			if len(l.a) > 0 && l.a[0].v.t != nil {
				t = &goType{kind: goSlice, elem: l.a[0].v.t}
			}
		}
		if p == "slices.Sorted" {
			if err := sortBy(l.a, natural); err != nil {
				return nil, true, err
			}
		}
		if p == "slices.Compact" {
			known := true
			l.a = slices.CompactFunc(l.a, func(x, y *goCell) bool {
				same, ok := m.goSame(x.v, y.v, nil)
				known = known && ok
				return same
			})
			if !known {
				return give(dontKnow("which items of a list are the same"), nil)
			}
		}
		return []goValue{{l, t}}, true, m.use(len(l.a))
	case "slices.Max", "slices.Min":
		a, ok := items(0)
		if !ok || len(a) == 0 {
			return give(dontKnow("the most of a list"), nil)
		}
		best := a[0].v
		for _, c := range a[1:] {
			yes, err := natural(c.v, best)
			if err != nil {
				return nil, true, err
			}
			if same, _ := m.goSame(c.v, best, nil); yes == (p == "slices.Min") && !same {
				best = c.v
			}
		}
		return []goValue{best}, true, nil
	case "slices.Equal":
		a, ok1 := items(0)
		b, ok2 := items(1)
		if !ok1 || !ok2 {
			return give(dontKnow("whether two lists are the same"), nil)
		}
		same, ok := m.goSameCells(a, b)
		if !ok {
			return give(dontKnow("whether two lists are the same"), nil)
		}
		return give(same, tBool)
	case "slices.Values", "slices.All", "slices.Backward", "maps.Keys", "maps.Values", "maps.All", "strings.SplitSeq", "strings.FieldsSeq", "strings.Lines":
		seq := &goSequence{}
		add := func(v ...goValue) { seq.items = append(seq.items, v) }
		switch {
		case strings.HasPrefix(p, "strings."):
			t, ok := text(0)
			sep, _ := text(1)
			if !ok || unknown(1) != nil {
				return give(dontKnow("parts of a text"), nil)
			}
			parts := strings.Fields(t)
			if p == "strings.SplitSeq" {
				parts = strings.Split(t, sep)
			} else if p == "strings.Lines" {
				parts = strings.SplitAfter(t, "\n")
			}
			for _, x := range parts[:min(len(parts), maxItems)] {
				if p != "strings.Lines" || x != "" {
					add(goValue{x, tString})
				}
			}
		case strings.HasPrefix(p, "maps."):
			t, ok := arg(0).v.(*goTable)
			if !ok && arg(0).v != nil {
				return give(dontKnow("what a map holds"), nil)
			}
			if ok {
				for _, k := range t.keys {
					e := t.m[k]
					switch p {
					case "maps.Keys":
						add(e.k)
					case "maps.Values":
						add(e.c.v)
					default:
						add(e.k, e.c.v)
					}
				}
			}
		default:
			a, ok := items(0)
			if !ok {
				return give(dontKnow("what a list holds"), nil)
			}
			for i, c := range a {
				if p == "slices.Values" {
					add(c.v)
				} else {
					add(goValue{integer(i), tInt}, c.v)
				}
			}
			if p == "slices.Backward" {
				slices.Reverse(seq.items)
			}
		}
		return give(seq, nil)
	case "maps.Clone", "maps.Copy":
		if p == "maps.Clone" {
			t, ok := arg(0).v.(*goTable)
			if !ok {
				return []goValue{arg(0)}, true, nil
			}
			w := newTable()
			for _, k := range t.keys {
				w.set(t.m[k].k, goCopy(t.m[k].c.v), t.m[k].c.t)
			}
			return give(w, arg(0).t)
		}
		to, ok1 := arg(0).v.(*goTable)
		from, ok2 := arg(1).v.(*goTable)
		if !ok1 || !ok2 {
			return nil, true, undecided("a map that is not known")
		}
		for _, k := range from.keys {
			to.set(from.m[k].k, goCopy(from.m[k].c.v), from.m[k].c.t)
		}
		return nil, true, nil
	case "strings.Map", "strings.FieldsFunc", "strings.TrimFunc", "strings.TrimLeftFunc", "strings.TrimRightFunc", "strings.IndexFunc", "strings.ContainsFunc":
		i := 0
		if p == "strings.Map" {
			i = 1
		}
		t, ok := text(i)
		if !ok {
			return give(dontKnow("a text that is not known"), tString)
		}
		var failed error
		is := func(r rune) bool {
			yes, err := holds(arg(1), goValue{integer(r), tRune})
			failed = cmp.Or(failed, err)
			return yes
		}
		var v any
		kind := tString
		switch p {
		case "strings.Map":
			v = strings.Map(func(r rune) rune {
				x, err := calls(arg(0), goValue{integer(r), tRune})
				n, ok := x.v.(integer)
				if err == nil && !ok {
					err = undecided("a letter that is not known")
				}
				failed = cmp.Or(failed, err)
				return rune(n)
			}, t)
		case "strings.TrimFunc":
			v = strings.TrimFunc(t, is)
		case "strings.TrimLeftFunc":
			v = strings.TrimLeftFunc(t, is)
		case "strings.TrimRightFunc":
			v = strings.TrimRightFunc(t, is)
		case "strings.IndexFunc":
			v, kind = integer(strings.IndexFunc(t, is)), tInt
		case "strings.ContainsFunc":
			v, kind = strings.ContainsFunc(t, is), tBool
		default:
			w := m.goFrom(oldTexts(strings.FieldsFunc(t, is)))
			return []goValue{w}, true, failed
		}
		return []goValue{{v, kind}}, true, failed
	case "strings.Title", "strings.IndexByte", "strings.IndexRune", "strings.IndexAny", "strings.LastIndexByte", "strings.ContainsAny", "strings.ContainsRune", "strings.Repeat", "strings.SplitAfter", "strings.SplitAfterN", "strings.ToTitle", "strings.TrimLeft":
		t, ok := text(0)
		if !ok {
			return nil, false, nil
		}
		if unknown(1) != nil || unknown(2) != nil {
			return give(dontKnow("what is made of a text"), nil)
		}
		w, _ := text(1)
		n, _ := arg(1).v.(integer)
		switch p {
		case "strings.Title":
			up := true
			return give(strings.Map(func(r rune) rune {
				was := up
				if up = !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != '_'; was {
					return unicode.ToTitle(r)
				}
				return r
			}, t), tString)
		case "strings.IndexByte":
			return give(integer(strings.IndexByte(t, byte(n))), tInt)
		case "strings.LastIndexByte":
			return give(integer(strings.LastIndexByte(t, byte(n))), tInt)
		case "strings.IndexRune":
			return give(integer(strings.IndexRune(t, rune(n))), tInt)
		case "strings.IndexAny":
			return give(integer(strings.IndexAny(t, w)), tInt)
		case "strings.ContainsAny":
			return give(strings.ContainsAny(t, w), tBool)
		case "strings.ContainsRune":
			return give(strings.ContainsRune(t, rune(n)), tBool)
		case "strings.Repeat":
			if n < 0 || int(n)*len(t) > maxText {
				return nil, true, spent("a text that is too long")
			}
			return give(strings.Repeat(t, int(n)), tString)
		case "strings.ToTitle":
			return give(strings.ToTitle(t), tString)
		case "strings.TrimLeft":
			return give(strings.TrimLeft(t, w), tString)
		case "strings.SplitAfter":
			return []goValue{m.goFrom(oldTexts(strings.SplitAfter(t, w)))}, true, nil
		default:
			k, _ := arg(2).v.(integer)
			return []goValue{m.goFrom(oldTexts(strings.SplitAfterN(t, w, int(k))))}, true, nil
		}
	case "strings.NewReplacer":
		var words []string
		for i := range args {
			t, ok := text(i)
			if !ok {
				return nil, false, nil
			}
			words = append(words, t)
		}
		if len(words)%2 != 0 {
			return nil, true, giveUp("what is replaced")
		}
		r := strings.NewReplacer(words...)
		o := newObject()
		o.class = &class{name: "strings.Replacer", builtin: true, statics: newObject(), methods: newObject()}
		o.cells["r"] = &cell{v: r}
		return give(o, &goType{kind: goOutside, name: "strings.Replacer"})
	case "unicode.IsDigit", "unicode.IsNumber", "unicode.IsLetter", "unicode.IsSpace", "unicode.IsUpper", "unicode.IsLower", "unicode.IsPunct", "unicode.ToUpper", "unicode.ToLower":
		n, ok := arg(0).v.(integer)
		if !ok {
			return nil, false, nil
		}
		r := rune(n)
		switch p {
		case "unicode.IsDigit":
			return give(unicode.IsDigit(r), tBool)
		case "unicode.IsNumber":
			return give(unicode.IsNumber(r), tBool)
		case "unicode.IsLetter":
			return give(unicode.IsLetter(r), tBool)
		case "unicode.IsSpace":
			return give(unicode.IsSpace(r), tBool)
		case "unicode.IsUpper":
			return give(unicode.IsUpper(r), tBool)
		case "unicode.IsLower":
			return give(unicode.IsLower(r), tBool)
		case "unicode.IsPunct":
			return give(unicode.IsPunct(r), tBool)
		case "unicode.ToUpper":
			return give(integer(unicode.ToUpper(r)), tRune)
		}
		return give(integer(unicode.ToLower(r)), tRune)
	case "math.Floor", "math.Ceil", "math.Round", "math.Trunc", "math.Abs", "math.Sqrt", "math.Max", "math.Min", "math.Pow":
		x, ok1 := arg(0).v.(float64)
		y, _ := arg(1).v.(float64)
		if n, ok := arg(0).v.(integer); ok {
			x, ok1 = float64(n), true
		}
		if n, ok := arg(1).v.(integer); ok {
			y = float64(n)
		}
		if !ok1 {
			return nil, false, nil
		}
		v := map[string]func(float64) float64{"math.Floor": math.Floor, "math.Ceil": math.Ceil, "math.Round": math.Round, "math.Trunc": math.Trunc, "math.Abs": math.Abs, "math.Sqrt": math.Sqrt}[p]
		if v != nil {
			return give(v(x), tFloat)
		}
		return give(map[string]func(x, y float64) float64{"math.Max": math.Max, "math.Min": math.Min, "math.Pow": math.Pow}[p](x, y), tFloat)
	case "sync.OnceValue", "sync.OnceFunc", "sync.OnceValues":
		var kept []goValue
		ran := false
		fn := arg(0)
		return give(&goClosure{name: "once", native: func(m *machine, _ []goValue, at spot) ([]goValue, error) {
			if !ran {
				ran = true
				out, err := m.goApply(fn, nil, at, s)
				if err != nil {
					return nil, err
				}
				kept = out
			}
			return kept, nil
		}}, nil)
	case "context.WithValue":
		o := &opaque{path: "context.WithValue()", recv: f, props: newObject()}
		return give(&goContext{o, arg(0), arg(1), arg(2)}, nil)
	case "context.WithCancel", "context.WithTimeout", "context.WithDeadline", "os/signal.NotifyContext", "context.WithCancelCause":
		cancel := &goClosure{name: "cancel", native: func(*machine, []goValue, spot) ([]goValue, error) { return nil, nil }}
		return []goValue{{&opaque{path: p + "()", recv: f}, nil}, {cancel, nil}}, true, nil
	case "github.com/alecthomas/kong.Parse":
		path, err := m.goKong(arg(0), s)
		if err != nil {
			return nil, true, err
		}
		return give(&kongContext{path}, nil)
	case "golang.org/x/sync/errgroup.WithContext":
		z, err := m.goZero(outsideType("golang.org/x/sync/errgroup.Group"), s)
		return []goValue{{z.v, pointerTo(z.t)}, {&opaque{path: p + "()", recv: f}, nil}}, true, err
	case "os/signal.Notify", "os/signal.Stop":
		return nil, true, nil
	case "reflect.ValueOf":
		return give(&goReflected{v: arg(0)}, nil)
	case "reflect.TypeOf":
		return give(&goReflected{t: arg(0).t, isType: true}, nil)
	case "reflect.Indirect":
		if r, ok := arg(0).v.(*goReflected); ok {
			list, err := m.goReflect(r, "Elem", nil, at)
			return list, true, err
		}
	}
	if list, done, err := m.goPurely(p, args); done || err != nil {
		return list, done, err
	}
	if strings.HasPrefix(p, "slices.") || strings.HasPrefix(p, "maps.") || strings.HasPrefix(p, "sort.") {
		g := &goListing{m: m, holds: holds, calls: calls, natural: natural, items: items}
		if list, done, err := g.helped(p, args); done || err != nil {
			return list, done, err
		}
	}
	if value.Decodes(p) {
		return m.goDecodes(f, args, at, s)
	}
	if strings.HasSuffix(p, ".Decode") && f.recv != nil && len(args) == 1 { // json.NewDecoder(x).Decode(&y)
		from := f.recv
		if strings.HasSuffix(from.path, ".NewDecoder()") && len(from.args) == 1 {
			if from.props != nil && from.props.cells[onlyFields] != nil {
				m.onlyFields = true
				defer func() { m.onlyFields = false }()
			}
			return m.goDecoded(from.args[0], arg(0), strings.Contains(from.path, "json"), at, s)
		}
	}
	if strings.HasSuffix(p, ".DisallowUnknownFields") {
		if f.recv != nil {
			if f.recv.props == nil {
				f.recv.props = newObject()
			}
			f.recv.props.set(onlyFields, true)
		}
		return nil, true, nil
	}
	return nil, false, nil
}

func oldTexts(texts []string) *list {
	l := &list{}
	for _, t := range texts[:min(len(texts), maxItems)] {
		l.items = append(l.items, t)
	}
	return l
}

// onlyFields is the hidden key of a reader that takes no other fields than those of
// the structure.
const onlyFields = "\x00only"

// goContext is a context with a value.
type goContext struct {
	*opaque
	up, k, v goValue
}

// goShared are the methods of what the library has for sharing: groups that are
// waited for, locks, numbers and maps of several.
func (m *machine) goShared(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	o := f.self
	if o.class == nil {
		return nil, false, nil
	}
	name := f.path[strings.LastIndexByte(f.path, '.')+1:]
	arg := func(i int) goValue {
		if i < len(args) {
			return args[i]
		}
		return goValue{}
	}
	number := func(k string) integer {
		v, _ := o.get(k)
		n, _ := v.(integer)
		return n
	}
	switch of := o.class.name; {
	case of == "sync.WaitGroup" || strings.HasSuffix(of, "errgroup.Group"):
		switch name {
		case "Add":
			n, ok := arg(0).v.(integer)
			if !ok {
				return nil, true, giveUp("how many are waited for")
			}
			o.set("n", number("n")+n)
			return nil, true, nil
		case "Done":
			o.set("n", number("n")-1)
			return nil, true, nil
		case "Go":
			out, err := m.goApply(arg(0), nil, at, s)
			if x, ok := err.(*exit); ok && x.stays {
				m.stayed++
				o.set("n", number("n")+1)
				return nil, true, nil
			}
			if err == nil && len(out) > 0 && out[0].v != nil && o.cells["failed"] == nil {
				o.cells["failed"] = &cell{v: out[0]}
			}
			return nil, true, err
		case "Wait":
			if number("n") > 0 {
				return nil, true, &exit{stays: true}
			}
			if c := o.cells["failed"]; c != nil {
				return []goValue{c.v.(goValue)}, true, nil
			}
			return []goValue{{nil, nil}}, true, nil
		case "SetLimit":
			return nil, true, nil
		}
	case of == "sync.Mutex" || of == "sync.RWMutex":
		switch name {
		case "Lock", "Unlock", "RLock", "RUnlock":
			return nil, true, nil
		case "TryLock":
			return []goValue{{true, tBool}}, true, nil
		}
	case of == "strings.Builder" || of == "bytes.Buffer":
		old, _ := o.get("text")
		t, _ := old.(string)
		blank, unclear := old.(*opaque) // something was written that is not known
		switch name {
		case "WriteByte", "WriteRune", "WriteString", "Write":
			given := []goValue{{integer(1), tInt}, {nil, nil}}
			switch x := arg(0).v.(type) {
			case integer:
				if name == "WriteByte" {
					t += string([]byte{byte(x)})
					given = given[1:]
				} else {
					t += string(rune(x))
				}
			case string:
				t += x
			case *content:
				t += x.text
			case *goList:
				b, known := goByteText(x)
				if t += b; !known {
					blank, unclear = dontKnow("a text that is written"), true
				}
			default:
				blank, unclear = dontKnow("a text that is written"), true
			}
			if len(t) > maxText {
				return nil, true, spent("a text that is too long")
			}
			if unclear {
				o.set("text", blank)
				return given, true, nil
			}
			o.set("text", t)
			if name != "WriteByte" {
				given[0].v = integer(len(t))
			}
			return given, true, m.use(len(t) / 8)
		case "String", "Len", "Bytes":
			if unclear {
				return []goValue{{blank, map[string]*goType{"String": tString, "Len": tInt, "Bytes": tBytes}[name]}}, true, nil
			}
			switch name {
			case "Len":
				return []goValue{{integer(len(t)), tInt}}, true, nil
			case "Bytes":
				return []goValue{{t, tBytes}}, true, nil
			}
			return []goValue{{t, tString}}, true, nil
		case "Reset":
			o.set("text", "")
			return nil, true, nil
		case "Grow":
			return nil, true, nil
		}
	case of == "sync.Once" && name == "Do":
		if o.cells["done"] != nil {
			return nil, true, nil
		}
		o.set("done", true)
		_, err := m.goApply(arg(0), nil, at, s)
		return nil, true, err
	case strings.HasPrefix(of, "sync/atomic."):
		kind := tInt
		zero := goValue{integer(0), kind}
		switch {
		case of == "sync/atomic.Bool":
			zero = goValue{false, tBool}
		case of == "sync/atomic.Value" || strings.HasPrefix(of, "sync/atomic.Pointer"):
			zero = goValue{nil, nil}
		}
		old := zero
		if c := o.cells["v"]; c != nil {
			old = c.v.(goValue)
		}
		put := func(v goValue) {
			if v.t == nil || v.t.kind == goUntyped {
				v.t = old.t
			}
			o.cells["v"] = &cell{v: v}
		}
		switch name {
		case "Load":
			return []goValue{old}, true, nil
		case "Store":
			put(arg(0))
			return nil, true, nil
		case "Swap":
			put(arg(0))
			return []goValue{old}, true, nil
		case "Add":
			x, ok1 := old.v.(integer)
			y, ok2 := arg(0).v.(integer)
			if !ok1 || !ok2 {
				return nil, true, undecided("a number that is not known")
			}
			put(goValue{x + y, old.t})
			return []goValue{{x + y, old.t}}, true, nil
		case "CompareAndSwap":
			same, ok := m.goSame(old, arg(0), nil)
			if !ok {
				return nil, true, undecided("whether two things are the same")
			}
			if same {
				put(arg(1))
			}
			return []goValue{{same, tBool}}, true, nil
		}
	case of == "sync.Map":
		t := newTable()
		if c := o.cells["m"]; c != nil {
			t = c.v.(*goTable)
		}
		o.cells["m"] = &cell{v: t}
		key, ok := goKey(arg(0))
		if !ok {
			return nil, true, undecided("a key that is not known")
		}
		switch e := t.m[key]; name {
		case "Load":
			if e == nil {
				return []goValue{{nil, nil}, {false, tBool}}, true, nil
			}
			return []goValue{e.c.v, {true, tBool}}, true, nil
		case "Store":
			t.set(arg(0), arg(1), nil)
			return nil, true, nil
		case "LoadOrStore":
			if e == nil {
				t.set(arg(0), arg(1), nil)
				return []goValue{arg(1), {false, tBool}}, true, nil
			}
			return []goValue{e.c.v, {true, tBool}}, true, nil
		case "Delete":
			t.remove(arg(0))
			return nil, true, nil
		}
	case of == "strings.Replacer" && name == "Replace":
		r, ok := o.cells["r"].v.(*strings.Replacer)
		t, isText := arg(0).v.(string)
		if ok && isText {
			return []goValue{{r.Replace(t), tString}}, true, nil
		}
	case of == "regexp" && (name == "ReplaceAllString" || name == "FindString" || name == "MatchString" || name == "ReplaceAllStringFunc"):
		re, ok := o.cells["re"].v.(*regexp.Regexp)
		t, isText := arg(0).v.(string)
		if !ok || !isText {
			return []goValue{{dontKnow("what a pattern finds"), nil}}, true, nil
		}
		switch name {
		case "FindString":
			return []goValue{{re.FindString(t), tString}}, true, nil
		case "MatchString":
			return []goValue{{re.MatchString(t), tBool}}, true, nil
		case "ReplaceAllString":
			to, ok := arg(1).v.(string)
			if ok {
				return []goValue{{re.ReplaceAllString(t, to), tString}}, true, nil
			}
		case "ReplaceAllStringFunc":
			var failed error
			out := re.ReplaceAllStringFunc(t, func(x string) string {
				v, err := m.goApply(arg(1), []goValue{{x, tString}}, at, s)
				if err != nil || len(v) == 0 {
					failed = cmp.Or(failed, err)
					return x
				}
				w, ok := v[0].v.(string)
				if !ok {
					failed = undecided("a text that is not known")
				}
				return w
			})
			return []goValue{{out, tString}}, true, failed
		}
		return []goValue{{dontKnow("what a pattern finds"), nil}}, true, nil
	}
	return nil, false, nil
}

// goCauses are the errors that an error comes from.
func (m *machine) goCauses(v goValue, at spot) ([]goValue, error) {
	if f, ok := v.v.(*goFault); ok {
		return f.causes, nil
	}
	if _, out := v.v.(*opaque); out || v.v == nil {
		return nil, nil
	}
	fn, _, err := m.goMember(v, nil, "Unwrap", nil, nil)
	if err != nil {
		return nil, nil
	}
	return m.goApply(fn, nil, at, nil)
}

// goChain is errors.Is and errors.As.
func (m *machine) goChain(p string, v, target goValue, at spot) ([]goValue, bool, error) {
	open := []goValue{v}
	for n := 0; len(open) > 0 && n < 50; n++ {
		x := open[0]
		open = open[1:]
		if x.v == nil {
			continue
		}
		if o, ok := x.v.(*opaque); ok && !o.certain() {
			return []goValue{{dontKnow("what kind of error it is"), tBool}}, true, nil
		}
		if p == "errors.Is" {
			same, ok := m.goSame(x, target, nil)
			a, isA := x.v.(*opaque)
			b, isB := target.v.(*opaque)
			if isA && isB {
				same, ok = a.path == b.path || strings.HasSuffix(a.path, ".ErrNotExist") && strings.HasSuffix(b.path, ".ErrNotExist"), true
			} else if isA != isB {
				same, ok = false, true
			}
			if !ok {
				same = false
			}
			if same {
				return []goValue{{true, tBool}}, true, nil
			}
		} else {
			c, ok := target.v.(*goCell)
			if !ok {
				if o, isOut := target.v.(*object); isOut && o.class != nil {
					if f, isFault := x.v.(*goFault); isFault && f.path != "" && strings.HasSuffix(f.path, o.class.name) {
						return []goValue{{true, tBool}}, true, nil
					}
				}
				return []goValue{{dontKnow("what kind of error it is"), tBool}}, true, nil
			}
			if is, ok := m.goIs(x, c.t); ok && is {
				c.v = x
				return []goValue{{true, tBool}}, true, nil
			} else if !ok && c.t != nil {
				f, isFault := x.v.(*goFault)
				if isFault && f.path != "" && c.t.elem != nil && c.t.elem.name == f.path {
					c.v = goValue{&opaque{path: f.path}, c.t}
					if f.path == "net.AddrError" { // package net, AddrError
						o := newObject()
						o.class = &class{name: f.path, builtin: true, statics: newObject(), methods: newObject()}
						o.set("Err", f.msg)
						c.v.v = o
					}
					return []goValue{{true, tBool}}, true, nil
				}
				if isFault && f.path == "" && !f.own { // an error of a library, of a type that is not told
					return []goValue{{dontKnow("what kind of error it is"), tBool}}, true, nil
				}
			}
		}
		next, err := m.goCauses(x, at)
		if err != nil {
			return nil, true, err
		}
		open = append(open, next...)
	}
	return []goValue{{false, tBool}}, true, nil
}

// goDecodes reads data into what is handed over.
func (m *machine) goDecodes(f *opaque, args []goValue, at spot, s *goScope) ([]goValue, bool, error) {
	if len(args) < 2 {
		return nil, false, nil
	}
	from := m.goOld(args[0], 0)
	if strings.HasSuffix(f.path, ".DecodeFile") {
		from = m.readFile(from)
	}
	list, done, err := m.goDecoded(from, args[1], strings.Contains(f.path, "json"), at, s)
	if done && err == nil && (strings.HasSuffix(f.path, ".Decode") || strings.HasSuffix(f.path, ".DecodeFile")) {
		list = append([]goValue{{dontKnow("what was read"), nil}}, list...)
	}
	return list, done, err
}

func (m *machine) goDecoded(from any, into goValue, json bool, at spot, s *goScope) ([]goValue, bool, error) {
	if t, ok := from.(*thrown); ok {
		return []goValue{{&goFault{msg: t.String()}, tFault}}, true, nil
	}
	c, ok := into.v.(*goCell)
	if !ok {
		return nil, true, giveUp("what is read into a variable")
	}
	var x any
	var err error
	if t, isText := from.(string); isText && !json {
		x, err = m.parsedText(t, false)
	} else {
		x, err = m.parsed(from)
	}
	if _, ok := err.(*thrown); ok {
		return []goValue{{&goFault{msg: "not understood"}, tFault}}, true, nil
	}
	if err != nil {
		return nil, true, err
	}
	if !known(x) {
		return nil, true, giveUp("what is read into a variable")
	}
	bad, err := m.goFillIn(c, m.fitted(x), json, s, 0)
	if err != nil {
		return nil, true, err
	}
	if bad != "" {
		return []goValue{{&goFault{msg: bad}, tFault}}, true, nil
	}
	return []goValue{{nil, nil}}, true, nil
}

// goByteText is the text of a list of bytes; known is false where one of them is not known.
func goByteText(l *goList) (text string, known bool) {
	b := make([]byte, 0, len(l.a))
	for _, c := range l.a {
		n, ok := c.v.v.(integer)
		if !ok {
			return "", false
		}
		b = append(b, byte(n))
	}
	return string(b), true
}

// scalarJSON is a text, a number or a truth as JSON has it; ok is false for the rest.
func scalarJSON(x any) (text string, ok bool) {
	switch x := x.(type) {
	case string:
		b, err := json.Marshal(x)
		return string(b), err == nil
	case integer, bool:
		return show(x), true
	}
	return "", false
}

// goTakes lets a value of a type of the program take what was read by itself; bad is the
// error that it gives (Go 1.26, "encoding", TextUnmarshaler; "encoding/json", Unmarshaler).
func (m *machine) goTakes(c *goCell, t *goType, method, text string) (bad string, err error) {
	f := m.goFound(goValue{c, pointerTo(t)}, c, method)
	if f == nil {
		return "", giveUp("what %s does with data", method)
	}
	out, err := m.goCall(f, []goValue{{text, tBytes}}, spot{})
	switch {
	case err != nil:
		return "", err
	case len(out) != 1:
		return "", giveUp("what %s does with data", method)
	case out[0].v == nil:
		return "", nil
	}
	if o, ok := out[0].v.(*opaque); ok && !o.certain() {
		return "", undecided("whether %s takes what was read", method)
	}
	return "the data is not taken by " + method, nil
}

// goFillIn puts data into a variable of its type; bad says what does not fit.
func (m *machine) goFillIn(c *goCell, x any, json bool, s *goScope, depth int) (bad string, err error) {
	if depth > 20 {
		return "", spent("nested too deep")
	}
	if err := m.step(); err != nil {
		return "", err
	}
	t := c.t
	if t == nil {
		t = c.v.t
	}
	if x == nil {
		return "", nil
	}
	if t != nil && t.pkg != nil {
		own := t.pkg.methods[t.name]
		for _, name := range []string{"UnmarshalJSON", "UnmarshalYAML", "UnmarshalTOML"} {
			if own[name] == nil {
				continue
			}
			raw, plain := scalarJSON(x)
			if name != "UnmarshalJSON" || !json || !plain {
				return "", giveUp("what %s does with data", name)
			}
			return m.goTakes(c, t, name, raw)
		}
		if own["UnmarshalText"] != nil {
			text, isText := x.(string)
			if !isText {
				return "", giveUp("what UnmarshalText does with data")
			}
			return m.goTakes(c, t, "UnmarshalText", text)
		}
	}
	wrong := func() (string, error) { return "cannot unmarshal data into " + t.String(), nil }
	if t != nil && t.name == "log/slog.Level" {
		if text, ok := x.(string); ok { // Go 1.26, log/slog, Level.UnmarshalText
			n, ok := slogLevel(text)
			if !ok {
				return wrong()
			}
			c.v = goValue{n, t}
			return "", nil
		}
	}
	switch u := t.under(); {
	case u == nil || u.kind == goInterface:
		v := m.goFrom(x)
		if n, ok := v.v.(integer); ok && json {
			v = goValue{float64(n), tFloat}
		}
		if json {
			goFloats(v, 0)
		}
		c.v = v
	case u.kind == goPointer:
		in, ok := c.v.v.(*goCell)
		if !ok {
			z, err := m.goZero(u.elem, s)
			if err != nil {
				return "", err
			}
			in = &goCell{v: z, t: u.elem}
		}
		if bad, err := m.goFillIn(in, x, json, s, depth+1); bad != "" || err != nil {
			return bad, err
		}
		c.v = goValue{in, t}
	case u.kind == goStruct:
		o, ok := x.(*object)
		if !ok {
			return wrong()
		}
		r, ok := c.v.v.(*goRecord)
		if !ok || len(r.fields) != len(u.fields) {
			return "", undecided("a structure that is not known")
		}
		for _, k := range o.keys {
			to, err := m.goFieldOf(r, u, k, json, s, depth)
			if err != nil {
				return "", err
			}
			if to == nil {
				if m.onlyFields {
					bad = "unknown field " + strconv.Quote(k)
				}
				continue
			}
			if b, err := m.goFillIn(to, o.cells[k].v, json, s, depth+1); err != nil {
				return "", err
			} else if b != "" {
				bad = b
			}
		}
		return bad, nil
	case u.kind == goMap:
		o, ok := x.(*object)
		if !ok {
			return wrong()
		}
		table, ok := c.v.v.(*goTable)
		if !ok {
			table = newTable()
		}
		for _, k := range o.keys {
			z, err := m.goZero(u.elem, s)
			if err != nil {
				return "", err
			}
			e := &goCell{v: z, t: u.elem}
			if bad, err := m.goFillIn(e, o.cells[k].v, json, s, depth+1); bad != "" || err != nil {
				return bad, err
			}
			key := goValue{k, u.key}
			if u.key.is(goInt) {
				n, err := strconv.Atoi(k)
				if err != nil {
					return wrong()
				}
				key.v = integer(n)
			}
			table.set(key, e.v, u.elem)
		}
		c.v = goValue{table, t}
	case u.kind == goSlice:
		l, ok := x.(*list)
		if !ok {
			return wrong()
		}
		out := &goList{}
		for _, y := range l.items {
			z, err := m.goZero(u.elem, s)
			if err != nil {
				return "", err
			}
			e := &goCell{v: z, t: u.elem}
			if bad, err := m.goFillIn(e, y, json, s, depth+1); bad != "" || err != nil {
				return bad, err
			}
			out.a = append(out.a, e)
		}
		c.v = goValue{out, t}
	case t == tLength:
		return "", giveUp("a length of time in data")
	case u.kind == goInt:
		n, ok := x.(integer)
		if !ok {
			return wrong()
		}
		if wrapped(n, t) != n {
			return wrong()
		}
		c.v = goValue{n, t}
	case u.kind == goFloat:
		f, ok := toNumber(x)
		if _, isText := x.(string); !ok || isText {
			return wrong()
		}
		c.v = goValue{f, t}
	case u.kind == goBool:
		b, ok := x.(bool)
		if !ok {
			return wrong()
		}
		c.v = goValue{b, t}
	case u.kind == goString:
		text, ok := x.(string)
		if !ok {
			if json {
				return wrong()
			}
			switch x.(type) { // YAML takes a number for a text
			case integer, float64, bool:
				text = show(x)
			default:
				return wrong()
			}
		}
		c.v = goValue{text, t}
	case u.kind == goOutside: // what fits it is not known here
		c.v = goValue{dontKnow("what is read into a variable"), t}
	default:
		return "", giveUp("what is read into a variable")
	}
	return "", nil
}

// slogLevel is the level of log/slog that a text names: a name, and what is added to it.
func slogLevel(text string) (integer, bool) {
	name, offset := text, 0
	if i := strings.IndexAny(text, "+-"); i >= 0 {
		n, err := strconv.Atoi(text[i:])
		if err != nil {
			return 0, false
		}
		name, offset = text[:i], n
	}
	n, ok := map[string]int{"DEBUG": -4, "INFO": 0, "WARN": 4, "ERROR": 8}[strings.ToUpper(name)]
	return integer(n + offset), ok
}

// goFloats makes all whole numbers in data ones with a fraction, as encoding/json
// reads them.
func goFloats(v goValue, depth int) {
	fix := func(c *goCell) {
		if n, ok := c.v.v.(integer); ok {
			c.v = goValue{float64(n), tFloat}
		} else if depth < 20 {
			goFloats(c.v, depth+1)
		}
	}
	switch x := v.v.(type) {
	case *goList:
		for _, c := range x.a {
			fix(c)
		}
	case *goTable:
		for _, e := range x.m {
			fix(e.c)
		}
	}
}

// goFieldOf is the field of a structure that a name in data is for; nil for none.
func (m *machine) goFieldOf(r *goRecord, u *goType, name string, json bool, s *goScope, depth int) (*goCell, error) {
	for i, f := range u.fields {
		tag, given := "", false
		for _, lib := range []string{"json", "yaml", "toml", "mapstructure"} {
			if (lib == "json") != json && lib == "json" {
				continue
			}
			if j := strings.Index(f.tag, lib+`:"`); j >= 0 && !(json && lib != "json") {
				tag, _, _ = strings.Cut(f.tag[j+len(lib)+2:], `"`)
				tag, _, _ = strings.Cut(tag, ",")
				given = tag != ""
			}
		}
		if tag == "-" {
			continue
		}
		if given && (tag == name || json && strings.EqualFold(tag, name)) || !given && !f.embedded && strings.EqualFold(f.name, name) {
			return r.fields[i], nil
		}
	}
	for i, f := range u.fields {
		if !f.embedded || depth > 10 {
			continue
		}
		c := r.fields[i]
		t := f.t
		if t.kind == goPointer {
			t = t.elem
			if in, ok := c.v.v.(*goCell); ok {
				c = in
			} else if t.is(goStruct) {
				z, err := m.goZero(t, s)
				if err != nil {
					return nil, err
				}
				in := &goCell{v: z, t: t}
				c.v = goValue{in, f.t}
				c = in
			}
		}
		if in, ok := c.v.v.(*goRecord); ok && t.is(goStruct) {
			if to, err := m.goFieldOf(in, t.under(), name, json, s, depth+1); to != nil || err != nil {
				return to, err
			}
		}
	}
	return nil, nil
}

// goReflected is a value or a type of package reflect.
type goReflected struct {
	v      goValue
	c      *goCell
	t      *goType
	isType bool
	field  *goField
	index  int
}

// goReflect calls a method of package reflect.
func (m *machine) goReflect(r *goReflected, name string, args []goValue, at spot) ([]goValue, error) {
	give := func(v any, t *goType) ([]goValue, error) { return []goValue{{v, t}}, nil }
	arg := func() goValue {
		if len(args) > 0 {
			return args[0]
		}
		return goValue{}
	}
	kind := func(t *goType) integer {
		if t == nil {
			return 0
		}
		u := t.under()
		n := map[goKind]string{goBool: "Bool", goInt: "Int", goFloat: "Float64", goString: "String", goPointer: "Pointer", goSlice: "Slice", goArray: "Array", goMap: "Map", goFunc: "Func", goStruct: "Struct", goInterface: "Interface", goChan: "Chan"}[u.kind]
		if u.kind == goInt && u.name != "int" {
			n = strings.ToUpper(u.name[:1]) + u.name[1:]
			if u.unsigned && u.name != "" {
				n = "U" + u.name[1:]
			}
			if _, ok := goConstants["reflect."+n]; !ok {
				n = "Int64"
			}
		}
		v, _ := goConstants["reflect."+n].v.(integer)
		return v
	}
	t := r.t
	if !r.isType && r.field == nil {
		if t = r.v.t; r.c != nil && r.c.t != nil {
			t = r.c.t
		}
	}
	u := t.under()
	if r.field != nil {
		key, ok := arg().v.(string)
		if !ok {
			return nil, giveUp("%s of a field", name)
		}
		text, there := reflect.StructTag(r.field.tag).Lookup(key)
		if name == "Lookup" {
			return []goValue{{text, tString}, {there, tBool}}, nil
		}
		return give(text, tString)
	}
	switch name {
	case "Elem":
		if r.isType {
			if u != nil && u.elem != nil {
				return give(&goReflected{t: u.elem, isType: true}, nil)
			}
			break
		}
		if c, ok := r.v.v.(*goCell); ok {
			return give(&goReflected{v: c.v, c: c}, nil)
		}
	case "Type":
		return give(&goReflected{t: t, isType: true}, nil)
	case "Kind":
		return give(kind(t), tReflectKind)
	case "Name", "String":
		if r.isType {
			if name == "Name" && t != nil {
				return give(t.name, tString)
			}
			return give(t.String(), tString)
		}
		if s, ok := r.v.v.(string); ok {
			return give(s, tString)
		}
	case "NumField":
		if u != nil && u.kind == goStruct {
			return give(integer(len(u.fields)), tInt)
		}
	case "Field", "FieldByName":
		if u == nil || u.kind != goStruct {
			break
		}
		i := -1
		if n, ok := arg().v.(integer); ok {
			i = int(n)
		} else if w, ok := arg().v.(string); ok {
			for j, f := range u.fields {
				if f.name == w {
					i = j
				}
			}
		}
		if i < 0 || i >= len(u.fields) {
			break
		}
		f := &u.fields[i]
		if r.isType {
			o := &goRecord{}
			tf := &goType{kind: goStruct, name: "reflect.StructField"}
			for _, part := range []struct {
				name string
				v    goValue
			}{{"Name", goValue{f.name, tString}}, {"Type", goValue{&goReflected{t: f.t, isType: true}, nil}}, {"Tag", goValue{&goReflected{t: &goType{name: f.tag}, field: f}, nil}}, {"Anonymous", goValue{f.embedded, tBool}}, {"PkgPath", goValue{unexported(f.name), tString}}, {"Index", goValue{&goList{[]*goCell{{v: goValue{integer(i), tInt}}}}, &goType{kind: goSlice, elem: tInt}}}} {
				tf.fields = append(tf.fields, goField{name: part.name})
				o.fields = append(o.fields, &goCell{v: part.v})
			}
			v := goValue{o, tf}
			if name == "FieldByName" {
				return []goValue{v, {true, tBool}}, nil
			}
			return []goValue{v}, nil
		}
		rec, ok := r.v.v.(*goRecord)
		if r.c != nil {
			rec, ok = r.c.v.v.(*goRecord)
		}
		if ok {
			c := rec.fields[i]
			return give(&goReflected{v: c.v, c: c}, nil)
		}
	case "SetString", "SetInt", "SetUint", "SetFloat", "SetBool", "Set":
		if r.c == nil {
			break
		}
		v := arg()
		if x, ok := v.v.(*goReflected); ok {
			v = x.v
		}
		if u != nil && u.kind == goInt {
			if n, ok := v.v.(integer); ok {
				v.v = wrapped(n, t)
			}
		}
		r.c.v = goValue{v.v, t}
		return nil, nil
	case "CanSet", "CanAddr", "CanInterface", "IsValid", "IsExported":
		return give(true, tBool)
	case "Interface":
		if r.c != nil {
			return []goValue{r.c.v}, nil
		}
		return []goValue{r.v}, nil
	case "Int", "Uint", "Bool", "Float":
		if r.c != nil {
			return []goValue{{r.c.v.v, map[string]*goType{"Int": goBasic["int64"], "Uint": goBasic["uint64"], "Bool": tBool, "Float": tFloat}[name]}}, nil
		}
		return []goValue{r.v}, nil
	case "IsZero", "IsNil":
		z, err := m.goZero(t, nil)
		if err != nil {
			return nil, err
		}
		v := r.v
		if r.c != nil {
			v = r.c.v
		}
		if same, ok := m.goSame(v, z, nil); ok {
			return give(same, tBool)
		}
	case "Addr":
		if r.c != nil {
			return give(&goReflected{v: goValue{r.c, pointerTo(t)}}, nil)
		}
	}
	return nil, giveUp("what %s of package reflect gives", name)
}

func unexported(name string) string {
	if name != "" && unicode.IsUpper([]rune(name)[0]) {
		return ""
	}
	return "main"
}
