package trace

import (
	"slices"
	"strconv"
	"strings"
)

// Packages that put objects together: lodash 4 (documentation, "Object" and
// "Lang"), deepmerge 4, defu 6 and object-assign 4; read 2026-11.

// together calls a function of such a package; done is false for any other.
func (m *machine) together(p string, args []any) (v any, done bool, err error) {
	name, ok := strings.CutPrefix(p, "lodash.")
	for _, front := range []string{"lodash/fp.", "lodash/fp/"} { // what it is given comes in another order
		if strings.HasPrefix(p, front) {
			return nil, false, nil
		}
	}
	if !ok {
		for _, front := range []string{"lodash/", "lodash-es.", "lodash-es/", "underscore."} {
			if rest, found := strings.CutPrefix(p, front); found {
				name, ok = strings.TrimSuffix(rest, ".js"), true
			}
		}
	}
	switch {
	case p == "deepmerge", p == "deepmerge.all":
		name = p
	case p == "defu", p == "defu.defu", p == "defu.createDefu":
		name = "defu"
	case p == "object-assign":
		name = "assign"
	case !ok:
		return nil, false, nil
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return undefined
	}
	plain := func(v any) (*object, bool) {
		o, ok := v.(*object)
		return o, ok && o.class == nil
	}
	given := func() ([]*object, error) {
		var list []*object
		for _, a := range args {
			switch x := a.(type) {
			case nil, undef:
				list = append(list, newObject())
			case *envMap:
				list = append(list, m.envObject(false))
			case *object:
				list = append(list, x)
			default:
				return nil, undecided("objects that are put together and not known")
			}
		}
		return list, nil
	}
	switch name {
	case "merge", "defaultsDeep", "defaults", "assign", "assignIn", "extend", "deepmerge", "deepmerge.all", "defu":
		if l, isList := arg(0).(*list); isList && name == "deepmerge.all" {
			args = l.items
		}
		if name == "deepmerge" && len(args) > 2 { // options
			return nil, false, nil
		}
		list, err := given()
		if err != nil {
			return nil, true, err
		}
		if len(list) == 0 {
			return arg(0), true, nil
		}
		into := list[0]
		switch name {
		case "defu", "deepmerge", "deepmerge.all":
			into = newObject()
			if err := m.mergeInto(into, list[0], name != "defu", name != "defu", 0); err != nil {
				return nil, true, err
			}
		}
		for _, from := range list[1:] {
			switch name {
			case "assign", "assignIn", "extend":
				for _, k := range from.keys {
					into.set(k, from.cells[k].v)
				}
			case "defaults":
				for _, k := range from.keys {
					if c := into.cells[k]; c == nil || c.v == any(undefined) {
						into.set(k, from.cells[k].v)
					}
				}
			default:
				over := name == "merge" || strings.HasPrefix(name, "deepmerge")
				if err := m.mergeInto(into, from, over, name != "merge" && name != "defaultsDeep", 0); err != nil {
					return nil, true, err
				}
			}
		}
		return into, true, nil
	case "get", "has", "result":
		v := arg(0)
		for _, k := range parts(arg(1)) {
			switch x := v.(type) {
			case *object:
				v, _ = x.get(k)
			case *list:
				i, err := strconv.Atoi(k)
				if v = any(undefined); err == nil && i >= 0 && i < len(x.items) {
					v = x.items[i]
				}
			case *envMap:
				if w, there := m.env.get(k); there {
					v = w
				} else {
					v = undefined
				}
			case *opaque:
				return dontKnow("what is in " + x.String()), true, nil
			default:
				v = undefined
			}
		}
		if name == "has" {
			return v != any(undefined), true, nil
		}
		if v == any(undefined) && len(args) > 2 {
			return args[2], true, nil
		}
		return v, true, nil
	case "set":
		o, isObject := plain(arg(0))
		path := parts(arg(1))
		if !isObject || len(path) == 0 {
			return nil, true, undecided("what is set in what is not known")
		}
		within(o, path[:len(path)-1]).set(path[len(path)-1], arg(2))
		return arg(0), true, nil
	case "pick", "omit":
		o, isObject := plain(arg(0))
		if !isObject {
			return dontKnow("a part of what is not known"), true, nil
		}
		var keys []string
		for _, a := range args[1:] {
			if l, isList := a.(*list); isList {
				for _, x := range l.items {
					keys = append(keys, show(x))
				}
			} else {
				keys = append(keys, show(a))
			}
		}
		out := newObject()
		for _, k := range o.keys {
			if slices.Contains(keys, k) == (name == "pick") {
				out.set(k, o.cells[k].v)
			}
		}
		return out, true, nil
	case "isNil", "isUndefined", "isNull", "isString", "isNumber", "isBoolean", "isArray", "isFunction", "isPlainObject", "isEmpty":
		v := arg(0)
		if !known(v) {
			return dontKnow("what " + v.(*opaque).String() + " is"), true, nil
		}
		is := false
		switch x := v.(type) {
		case nil:
			is = name == "isNil" || name == "isNull" || name == "isEmpty"
		case undef:
			is = name == "isNil" || name == "isUndefined" || name == "isEmpty"
		case string:
			is = name == "isString" || name == "isEmpty" && x == ""
		case float64, integer:
			is = name == "isNumber" || name == "isEmpty"
		case bool:
			is = name == "isBoolean" || name == "isEmpty"
		case *list:
			is = name == "isArray" || name == "isEmpty" && len(x.items) == 0
		case *object:
			is = name == "isPlainObject" && x.class == nil || name == "isEmpty" && len(x.keys) == 0
		case *function:
			is = name == "isFunction"
		}
		return is, true, nil
	case "toNumber":
		if !known(arg(0)) {
			return dontKnow("a number"), true, nil
		}
		f, _ := toNumber(arg(0))
		return f, true, nil
	}
	return nil, false, nil
}

// mergeInto puts what an object holds into another, level by level: over what is
// there, or beside it. Lists are joined, or taken place by place.
func (m *machine) mergeInto(into, from *object, over, joins bool, depth int) error {
	if depth > 40 {
		return spent("nested too deep")
	}
	for _, k := range from.keys {
		if err := m.step(); err != nil {
			return err
		}
		v := from.cells[k].v
		old, there := into.get(k)
		x, isObject := v.(*object)
		y, both := old.(*object)
		l, isList := v.(*list)
		switch {
		case isObject && x.class == nil:
			if !both {
				if there && old != any(undefined) && !over {
					continue
				}
				y = newObject()
			}
			if err := m.mergeInto(y, x, over, joins, depth+1); err != nil {
				return err
			}
			into.set(k, y)
		case isList:
			have, _ := old.(*list)
			switch {
			case have != nil && joins && over:
				v = &list{items: append(slices.Clone(have.items), l.items...)}
			case have != nil && joins:
				v = &list{items: append(slices.Clone(have.items), l.items...)}
			case have != nil && over:
				items := slices.Clone(have.items)
				for i, e := range l.items {
					if i < len(items) {
						items[i] = e
					} else {
						items = append(items, e)
					}
				}
				v = &list{items: items}
			case there && old != any(undefined) && !over:
				continue
			}
			into.set(k, v)
		case !over && there && old != any(undefined) && !(joins && old == nil):
		case v == any(undefined) && there && !joins:
		case !over && joins && (v == nil || v == any(undefined)): // defu passes over what is nothing
		default:
			into.set(k, v)
		}
	}
	return nil
}

// parts are the names of a path: a.b[0], or a list of them.
func parts(v any) []string {
	if l, ok := v.(*list); ok {
		var keys []string
		for _, x := range l.items {
			keys = append(keys, show(x))
		}
		return keys
	}
	return strings.FieldsFunc(show(v), func(r rune) bool { return r == '.' || r == '[' || r == ']' })
}
