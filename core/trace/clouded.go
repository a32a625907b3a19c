package trace

import "strings"

// What is not known stays so in what is made of it: whether something is the same
// as what a call of a package gave, how many different things there are among
// such, in which order they come.

// clouded finds what is not known and decides what a method of a collection or a
// function gives; nil where there is no such thing.
func clouded(base any, name string, args []any) *opaque {
	switch {
	case comparingItems[name]:
		if o := unclear([]any{base}, 0); o != nil {
			return o
		}
		return unclear(args, 1)
	case choosing[name]:
		return unclear(args, 3)
	}
	return nil
}

// unclear finds what nothing is known of, or what a call of a package gave, among
// values and, a few lists deep, in them.
func unclear(values []any, depth int) *opaque {
	for _, v := range values {
		switch v := v.(type) {
		case *opaque:
			if v.path == "" || strings.Contains(v.path, "()") {
				return v
			}
		case *list:
			if depth < 3 {
				if o := unclear(v.items, depth+1); o != nil {
					return o
				}
			}
		case *object:
			if depth >= 3 || v.class != nil && !v.dict {
				continue
			}
			for _, k := range v.keys {
				if o := unclear([]any{v.cells[k].v}, depth+1); o != nil {
					return o
				}
			}
		}
	}
	return nil
}
