package trace

import (
	"fmt"
	"reflect"
)

// goScanned are the kinds of variables that are read from a text, by their size in
// bits.
var goScanned = map[int][2]reflect.Type{
	8:  {reflect.TypeFor[int8](), reflect.TypeFor[uint8]()},
	16: {reflect.TypeFor[int16](), reflect.TypeFor[uint16]()},
	32: {reflect.TypeFor[int32](), reflect.TypeFor[uint32]()},
	64: {reflect.TypeFor[int64](), reflect.TypeFor[uint64]()},
}

// goScan reads a text into variables as fmt.Sscan, Sscanln and Sscanf do: by these
// themselves (package fmt, Go 1.26).
func goScan(call, text, format string, vars []goValue) ([]goValue, error) {
	var into []any
	for _, v := range vars {
		c, ok := v.v.(*goCell)
		if !ok {
			return nil, undecided("what %s reads", call)
		}
		kind := c.t
		if kind == nil {
			kind = c.v.t
		}
		now, known := c.v.v.(integer)
		switch {
		case kind.is(goString):
			t, ok := c.v.v.(string)
			if !ok {
				return nil, undecided("what %s reads", call)
			}
			into = append(into, &t)
		case kind.is(goInt):
			bits, signs := kind.under().bits, 0
			if bits == 0 {
				bits = 64
			}
			if kind.under().unsigned {
				signs = 1
			}
			p := reflect.New(goScanned[bits][signs])
			if !known {
				return nil, undecided("what %s reads", call)
			}
			if signs == 0 {
				p.Elem().SetInt(int64(now))
			} else {
				p.Elem().SetUint(uint64(now))
			}
			into = append(into, p.Interface())
		default:
			return nil, undecided("what %s reads", call)
		}
	}
	var n int
	var err error
	switch call {
	case "fmt.Sscanf":
		n, err = fmt.Sscanf(text, format, into...)
	case "fmt.Sscanln":
		n, err = fmt.Sscanln(text, into...)
	default:
		n, err = fmt.Sscan(text, into...)
	}
	for i, v := range vars {
		c := v.v.(*goCell)
		switch x := reflect.ValueOf(into[i]).Elem(); {
		case x.Kind() == reflect.String:
			c.v.v = x.String()
		case x.CanInt():
			c.v.v = integer(x.Int())
		default:
			c.v.v = integer(x.Uint())
		}
		if c.v.t == nil {
			c.v.t = c.t
		}
	}
	fault := goValue{nil, nil}
	if err != nil {
		fault = goValue{&goFault{msg: err.Error()}, tFault}
	}
	return []goValue{{integer(n), tInt}, fault}, nil
}
