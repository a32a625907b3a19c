package trace

import (
	"encoding/base64"
	"math"
	"net/url"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"ubique/core/code"
	"ubique/core/source"
)

// What functions of PHP do with texts, numbers, arrays, files of the tree and the
// environment (PHP manual, "Function Reference", 8.4; read 2026-11).

// phSpecial are what looks like a function and is none: its arguments are not
// all worked out.
func (m *machine) phSpecial(name string, n *code.Node, s *scope) (any, bool, error) {
	at := spot{s.module.file, n}
	switch name {
	case "isset", "empty":
		for _, a := range n.Args() {
			if a.Is(code.Index) && a.Kid(1) != nil && name == "isset" {
				base, err := m.eval(a.Kid(0), s)
				if err != nil {
					return nil, true, err
				}
				if o, ok := base.(*object); ok && o.class != nil && !o.dict {
					k, err := m.eval(a.Kids[1], s)
					if err != nil {
						return nil, true, err
					}
					if v, done, err := m.phOwn(o, "offsetExists", []any{k}, at); err != nil {
						return nil, true, err
					} else if yes, ok := phTruth(v); done && ok {
						if !yes {
							return false, true, nil
						}
						continue
					}
				}
			}
			v, err := m.eval(a, s)
			if err != nil {
				return nil, true, err
			}
			if o, ok := v.(*opaque); ok && (o.path == "" || strings.Contains(o.path, "()")) {
				return dontKnow("whether " + o.String() + " is there"), true, nil
			}
			if name == "empty" {
				yes, ok := phTruth(v)
				if !ok {
					return dontKnow("whether something is empty"), true, nil
				}
				return !yes, true, nil
			}
			if a.Is(code.Member) && name == "isset" {
				base, err := m.eval(a.Kid(0), s)
				if err != nil {
					return nil, true, err
				}
				if o, ok := base.(*object); ok && o.class != nil && o.cells[a.Name] == nil {
					if f, home := phMethod(o.class, "__isset"); f != nil {
						w := *f
						w.home = home
						if v, err = m.phInvoke(&w, o, []any{a.Name}, nil, at); err != nil {
							return nil, true, err
						}
						yes, ok := phTruth(v)
						if !ok {
							return dontKnow("whether " + a.Name + " is there"), true, nil
						}
						v = yes
						if !yes {
							v = nil
						}
					}
				}
			}
			if v == nil || v == any(undefined) {
				return false, true, nil
			}
		}
		return true, true, nil
	case "unset":
		for _, a := range n.Args() {
			switch {
			case a.Is(code.Name):
				delete(s.frame().vars, a.Name)
			case a.Is(code.Index) && a.Kid(1) != nil:
				o, err := m.phPlace(a.Kid(0), s)
				if err == nil && o != nil && o.class != nil && !o.dict {
					k, err := m.eval(a.Kids[1], s)
					if err != nil {
						return nil, true, err
					}
					if _, done, err := m.phOwn(o, "offsetUnset", []any{k}, at); err != nil {
						return nil, true, err
					} else if done {
						continue
					}
				}
				if err != nil {
					return nil, true, err
				}
				k, err := m.eval(a.Kid(1), s)
				if err != nil {
					return nil, true, err
				}
				if key, ok := phKey(k); ok && o != nil {
					o.remove(key)
				}
			case a.Is(code.Member):
				base, err := m.eval(a.Kid(0), s)
				if err != nil {
					return nil, true, err
				}
				if o, ok := base.(*object); ok {
					o.remove(a.Name)
				}
			}
		}
		return nil, true, nil
	case "require", "require_once", "include", "include_once":
		v, err := m.eval(n.Kid(1), s)
		if err != nil {
			return nil, true, err
		}
		p, ok := v.(string)
		if !ok {
			return nil, true, giveUp("a file that is named while the program runs")
		}
		t, in := m.treePath(p)
		if !strings.HasPrefix(p, "/") && !m.has(t) { // beside the file itself
			t = path.Join(source.Dir(s.module.file.Name), p)
		}
		switch {
		case !in:
			return nil, true, giveUp("a file outside of the tree")
		case strings.HasSuffix(name, "_once") && m.ph().loaded[t]:
			return true, true, nil
		case strings.HasSuffix(t, "vendor/autoload.php") && !m.ownLoader(t):
			return true, true, nil // the classes are found by their names
		case !m.has(t):
			if strings.HasPrefix(name, "include") {
				return false, true, nil
			}
			return nil, true, raise("Error", "Failed opening required "+p)
		}
		x, err := m.phInclude(t, s)
		return x, true, err
	case "exit", "die":
		for _, a := range n.Args() {
			if _, err := m.eval(a, s); err != nil {
				return nil, true, err
			}
		}
		return nil, true, &exit{}
	case "namespace", "declare", "echo", "print", "error_log", "printf", "var_dump", "print_r", "fwrite", "fputs", "fprintf", "set_error_handler", "set_exception_handler", "ini_set", "error_reporting", "set_time_limit", "register_shutdown_function", "pcntl_signal", "pcntl_async_signals", "date_default_timezone_set", "usleep", "sleep", "gc_collect_cycles", "ob_start", "flush", "ob_implicit_flush", "assert", "session_start", "header", "http_response_code", "trigger_error", "mb_internal_encoding", "opcache_get_status", "setlocale":
		if m.ph().functions[name] == nil {
			return integer(1), true, nil
		}
	case "list":
		return nil, true, giveUp("a target that is not followed")
	case "compact":
		o := phArray()
		for _, a := range n.Args() {
			if !a.Is(code.String) {
				return nil, true, giveUp("variables that are named while the program runs")
			}
			if c := phVar(s, "$"+a.Name); c != nil {
				o.set(a.Name, c.v)
			}
		}
		return o, true, nil
	case "extract", "eval", "get_defined_vars", "func_get_args":
		if name == "func_get_args" {
			break
		}
		if list := n.Args(); name == "extract" && len(list) == 1 { // PHP manual, "extract", EXTR_OVERWRITE
			v, err := m.eval(list[0], s)
			if err != nil {
				return nil, true, err
			}
			if o, ok := isArray(v); ok {
				for _, k := range o.keys {
					if k != "this" && k != "" && (k[0] < '0' || k[0] > '9') {
						phSet(s, "$"+k, o.cells[k].v)
					}
				}
				return integer(len(o.keys)), true, nil
			}
		}
		return nil, true, giveUp("variables that are named while the program runs")
	}
	_ = at
	return nil, false, nil
}

// phOffsets and phUnmatched are PREG_OFFSET_CAPTURE and PREG_UNMATCHED_AS_NULL (PHP
// manual, "PCRE: Predefined Constants").
const phOffsets, phUnmatched = integer(256), integer(512)

var phFlags = map[string]integer{"PREG_OFFSET_CAPTURE": phOffsets, "PREG_UNMATCHED_AS_NULL": phUnmatched}

// phPattern is a pattern of preg_match as package regexp reads it.
func (m *machine) phPattern(text string) (*regexp.Regexp, error) {
	if len(text) < 2 {
		return nil, giveUp("a regular expression")
	}
	open := text[0]
	end := open
	if c, ok := map[byte]byte{'(': ')', '{': '}', '[': ']', '<': '>'}[open]; ok {
		end = c
	}
	i := strings.LastIndexByte(text, end)
	if i < 1 {
		return nil, giveUp("a regular expression")
	}
	body, flags := text[1:i], strings.NewReplacer("u", "", "D", "").Replace(text[i+1:])
	body = strings.NewReplacer(`\/`, "/", `\#`, "#", `\Z`, `\z`).Replace(body)
	if strings.Trim(flags, "ims") != "" {
		return nil, giveUp("a regular expression")
	}
	if flags != "" {
		body = "(?" + flags + ")" + body
	}
	re, err := m.compile(body)
	if err != nil {
		return nil, giveUp("a regular expression")
	}
	return re, nil
}

// phBuiltin calls a function of PHP; done is false for any other.
func (m *machine) phBuiltin(name string, args []any, keys map[string]any, refs []*cell, s *scope, at spot) (v any, done bool, err error) {
	arg := func(i int) any {
		if i < len(args) {
			if c, ok := args[i].(*content); ok && name != "parse_ini_string" && name != "json_decode" && name != "yaml_parse" {
				return c.text
			}
			return args[i]
		}
		return nil
	}
	text := func(i int) string { return phShow(arg(i)) }
	ref := func(i int, v any) {
		if i < len(refs) && refs[i] != nil {
			refs[i].v = v
		}
	}
	if unclear(args, 1) == nil {
		if v, done, err := m.phFurther(name, arg, text, ref, refs, len(args)); done || err != nil {
			return v, done, err
		}
	}
	has := func(i int) bool { return i < len(args) }
	for i, a := range args {
		if o := unclear([]any{a}, 3); o != nil && i < 3 {
			switch name {
			case "intval", "strval", "trim", "strtolower", "strtoupper", "str_replace", "substr", "strlen", "explode", "sprintf", "strpos", "str_contains", "str_starts_with", "str_ends_with", "is_numeric", "ctype_digit", "count", "in_array", "json_decode", "dirname", "basename", "preg_match", "filter_var", "max", "min", "is_string", "is_int", "is_array", "is_null", "array_key_exists", "implode", "rtrim", "ltrim", "array_merge":
				for _, c := range refs {
					if c != nil && name == "preg_match" {
						c.v = dontKnow("what matches in " + o.String())
					}
				}
				return dontKnow("what is made of " + o.String()), true, nil
			}
		}
	}
	if o := clouded(nil, name, args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	array := func(i int) (*object, error) {
		if o, ok := isArray(arg(i)); ok {
			return o, m.use(len(o.keys))
		}
		if _, ok := arg(i).(*envMap); ok {
			return m.envObject(true), nil
		}
		if o, ok := arg(i).(*opaque); ok {
			return nil, undecided("all of %s", o.String())
		}
		return nil, mistaken(arg(i), nil, "TypeError", name+" wants an array")
	}
	call := func(fn any, with ...any) (any, error) { return m.phApply(fn, with, s, at) }
	holds := func(fn any, with ...any) (bool, error) {
		v, err := call(fn, with...)
		if err != nil {
			return false, err
		}
		return m.decide(v, s, at.n)
	}
	switch name {
	case "getenv":
		if len(args) == 0 || arg(0) == nil {
			return m.envObject(true), true, nil
		}
		if v, ok := m.lookup(text(0), at); ok {
			return v, true, nil
		}
		return false, true, nil
	case "putenv":
		k, v, ok := strings.Cut(text(0), "=")
		if ok {
			m.env.put(k, v)
		} else {
			m.env.drop(k)
		}
		return true, true, nil
	case "clone":
		o, ok := arg(0).(*object)
		if !ok || o.dict {
			return nil, true, undecided("a copy of what is not known")
		}
		c := newObject()
		c.class, c.made = o.class, o.made
		for _, k := range o.keys {
			v, err := m.phCopy(o.cells[k].v, 0)
			if err != nil {
				return nil, true, err
			}
			c.set(k, v)
		}
		if f, home := phMethod(o.class, "__clone"); f != nil {
			w := *f
			w.home = home
			_, err := m.phInvoke(&w, c, nil, nil, at)
			return c, true, err
		}
		return c, true, nil
	case "define":
		m.ph().consts[text(0)] = arg(1)
		return true, true, nil
	case "defined":
		_, ok := m.ph().consts[text(0)]
		return ok, true, nil
	case "constant":
		if v, ok := m.ph().consts[text(0)]; ok {
			return v, true, nil
		}
		if owner, c, ok := strings.Cut(text(0), "::"); ok {
			of, err := m.phNamed(owner, s)
			if err != nil {
				return nil, true, err
			}
			if cl, isClass := of.(*class); isClass {
				if v, ok := classKey(cl, c, true); ok {
					return v, true, nil
				}
			}
		}
		return nil, true, raise("Error", "Undefined constant")
	case "spl_autoload_register":
		m.ph().loaders = append(m.ph().loaders, arg(0))
		return true, true, nil
	case "function_exists":
		yes, ok := m.phHas(text(0))
		if !ok {
			return dontKnow("whether there is a function " + text(0)), true, nil
		}
		return yes, true, nil
	case "class_exists", "interface_exists", "enum_exists":
		c, err := m.phNamed(text(0), s)
		if err != nil {
			return nil, true, err
		}
		_, ok := c.(*class)
		if !ok {
			return dontKnow("whether a class is there"), true, nil
		}
		return ok, true, nil
	case "method_exists", "property_exists":
		o, ok := arg(0).(*object)
		if !ok || o.class == nil {
			return dontKnow("what something can do"), true, nil
		}
		if name == "property_exists" {
			return o.cells[text(1)] != nil, true, nil
		}
		f, _ := phMethod(o.class, text(1))
		return f != nil, true, nil
	case "extension_loaded", "php_sapi_name", "phpversion", "gethostname", "time", "microtime", "date", "uniqid", "mt_rand", "rand", "random_int", "getmypid", "hrtime", "spl_object_id", "sys_get_temp_dir", "memory_get_usage", "php_uname":
		if name == "php_sapi_name" {
			return "cli", true, nil
		}
		return dontKnow("what " + name + " gives"), true, nil
	case "call_user_func":
		v, err := m.phApply(arg(0), args[min(1, len(args)):], s, at)
		return v, true, err
	case "call_user_func_array":
		o, err := array(1)
		if err != nil {
			return nil, true, err
		}
		v, err := m.phApply(arg(0), phValues(o), s, at)
		return v, true, err
	case "func_get_args":
		return phList(s.frame().given), true, nil
	case "func_num_args":
		return integer(len(s.frame().given)), true, nil
	case "intval":
		if base, ok := arg(1).(integer); ok && base != 10 {
			i, _ := strconv.ParseInt(strings.TrimSpace(text(0)), int(base), 64)
			return integer(i), true, nil
		}
		return phInt(arg(0)), true, nil
	case "strval":
		v, err := m.phText(arg(0), s, at)
		return v, true, err
	case "floatval":
		n, _ := phNumber(arg(0))
		f, _ := toNumber(n)
		return f, true, nil
	case "boolval":
		yes, ok := phTruth(arg(0))
		return yes, ok, nil
	case "ord":
		if t, ok := arg(0).(string); ok && len(args) == 1 {
			if t == "" {
				return integer(0), true, nil
			}
			return integer(t[0]), true, nil
		}
	case "chr":
		if n, ok := arg(0).(integer); ok && n >= 0 && n < 256 {
			return string([]byte{byte(n)}), true, nil
		}
	case "is_null", "is_string", "is_int", "is_integer", "is_bool", "is_array", "is_float", "is_object", "is_callable", "is_iterable", "is_scalar", "is_resource":
		if o, ok := arg(0).(*opaque); ok && o.fresh { // streams are resources, sockets are objects (PHP 8)
			stream := strings.HasPrefix(o.path, "stream_")
			return name == "is_resource" && stream || name == "is_object" && !stream, true, nil
		}
		if !known(arg(0)) {
			return dontKnow("what kind something is of"), true, nil
		}
		x := arg(0)
		_, isArr := isArray(x)
		_, isObj := x.(*object)
		switch name {
		case "is_scalar":
			switch x.(type) {
			case string, integer, float64, bool:
				return true, true, nil
			}
			return false, true, nil
		case "is_iterable":
			return isArr, true, nil
		case "is_null":
			return x == nil, true, nil
		case "is_string":
			_, ok := x.(string)
			return ok, true, nil
		case "is_int", "is_integer":
			_, ok := x.(integer)
			return ok, true, nil
		case "is_bool":
			_, ok := x.(bool)
			return ok, true, nil
		case "is_array":
			return isArr, true, nil
		case "is_float":
			_, ok := x.(float64)
			return ok, true, nil
		case "is_object":
			return isObj && !isArr, true, nil
		case "is_callable":
			_, ok := x.(*function)
			if t, isText := x.(string); isText {
				sure := false
				if ok, sure = m.phHas(t); !sure {
					return dontKnow("whether there is a function " + t), true, nil
				}
			}
			return ok, true, nil
		}
		return dontKnow("what kind something is of"), true, nil
	case "is_numeric", "ctype_digit", "ctype_alpha", "ctype_alnum":
		t, isText := arg(0).(string)
		switch name {
		case "is_numeric":
			if isText {
				_, ok := phNumber(t)
				return ok && t != "", true, nil
			}
			switch arg(0).(type) {
			case integer, float64:
				return true, true, nil
			}
			return false, true, nil
		case "ctype_digit":
			return isText && t != "" && strings.Trim(t, "0123456789") == "", true, nil
		}
		return isText && t != "" && !strings.ContainsFunc(t, func(r rune) bool {
			letter := r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z'
			return !letter && (name == "ctype_alpha" || r < '0' || r > '9')
		}), true, nil
	case "gettype", "get_debug_type":
		switch arg(0).(type) {
		case string:
			return "string", true, nil
		case bool:
			return map[string]any{"gettype": "boolean", "get_debug_type": "bool"}[name], true, nil
		case integer:
			return map[string]any{"gettype": "integer", "get_debug_type": "int"}[name], true, nil
		}
		return dontKnow("what kind something is of"), true, nil
	case "get_class", "get_called_class":
		if o, ok := arg(0).(*object); ok && o.class != nil {
			return o.class.name, true, nil
		}
		return dontKnow("a class"), true, nil
	case "trim", "rtrim", "ltrim", "chop":
		cut := " \t\n\r\x00\x0b"
		if has(1) {
			if cut = text(1); strings.Contains(cut, "..") {
				return nil, true, giveUp("characters from one to another")
			}
		}
		t := text(0)
		if name != "rtrim" && name != "chop" {
			t = strings.TrimLeft(t, cut)
		}
		if name != "ltrim" {
			t = strings.TrimRight(t, cut)
		}
		return t, true, nil
	case "strtolower", "mb_strtolower":
		return strings.ToLower(text(0)), true, nil
	case "strtoupper", "mb_strtoupper":
		return strings.ToUpper(text(0)), true, nil
	case "ucfirst", "lcfirst", "ucwords":
		t := text(0)
		if t == "" {
			return t, true, nil
		}
		if name == "lcfirst" {
			return strings.ToLower(t[:1]) + t[1:], true, nil
		}
		if name == "ucfirst" {
			return strings.ToUpper(t[:1]) + t[1:], true, nil
		}
		w := strings.Split(t, " ")
		for i, x := range w {
			if x != "" {
				w[i] = strings.ToUpper(x[:1]) + x[1:]
			}
		}
		return strings.Join(w, " "), true, nil
	case "strlen", "mb_strlen":
		if name == "mb_strlen" {
			return integer(len([]rune(text(0)))), true, nil
		}
		return integer(len(text(0))), true, nil
	case "strrev":
		b := []byte(text(0))
		slices.Reverse(b)
		return string(b), true, nil
	case "str_repeat":
		n := phInt(arg(1))
		if n < 0 || len(text(0))*int(n) > maxText {
			return nil, true, spent("a text that is too long")
		}
		return strings.Repeat(text(0), int(n)), true, nil
	case "str_pad":
		n, fill := int(phInt(arg(1)))-len(text(0)), " "
		if has(2) {
			fill = text(2)
		}
		if n <= 0 || fill == "" || n > 1000 {
			return text(0), true, nil
		}
		pad := strings.Repeat(fill, n/len(fill)+1)[:n]
		if o, ok := arg(3).(*opaque); ok && o.path == "STR_PAD_LEFT" {
			return pad + text(0), true, nil
		}
		return text(0) + pad, true, nil
	case "substr", "mb_substr":
		t := text(0)
		from, n := int(phInt(arg(1))), len(t)
		if has(2) && arg(2) != nil {
			n = int(phInt(arg(2)))
		}
		if from < 0 {
			from = max(0, from+len(t))
		}
		from = min(from, len(t))
		to := from + n
		if n < 0 {
			to = len(t) + n
		}
		to = min(to, len(t))
		return t[from:max(from, to)], true, nil
	case "strpos", "stripos", "strrpos", "mb_strpos":
		h, n := text(0), text(1)
		off := int(phInt(arg(2)))
		if off < 0 || off > len(h) {
			return nil, true, giveUp("a place in a text")
		}
		if name == "stripos" {
			h, n = strings.ToLower(h), strings.ToLower(n)
		}
		i := strings.Index(h[off:], n)
		if name == "strrpos" {
			i = strings.LastIndex(h[off:], n)
		}
		if i < 0 {
			return false, true, nil
		}
		return integer(i + off), true, nil
	case "strstr", "strrchr":
		i := strings.Index(text(0), text(1))
		if name == "strrchr" {
			i = strings.LastIndex(text(0), text(1))
		}
		if i < 0 {
			return false, true, nil
		}
		if yes, _ := phTruth(arg(2)); yes {
			return text(0)[:i], true, nil
		}
		return text(0)[i:], true, nil
	case "str_contains":
		return strings.Contains(text(0), text(1)), true, nil
	case "str_starts_with":
		return strings.HasPrefix(text(0), text(1)), true, nil
	case "str_ends_with":
		return strings.HasSuffix(text(0), text(1)), true, nil
	case "substr_count":
		return integer(strings.Count(text(0), text(1))), true, nil
	case "strcmp", "strcasecmp", "strncmp":
		a, b := text(0), text(1)
		if name == "strcasecmp" {
			a, b = strings.ToLower(a), strings.ToLower(b)
		}
		if name == "strncmp" {
			n := int(phInt(arg(2)))
			a, b = a[:min(n, len(a))], b[:min(n, len(b))]
		}
		return integer(strings.Compare(a, b)), true, nil
	case "str_replace", "str_ireplace", "strtr":
		if name == "strtr" && len(args) == 3 {
			from, to := text(1), text(2)
			return strings.Map(func(r rune) rune {
				if i := strings.IndexRune(from, r); i >= 0 && i < len(to) {
					return rune(to[i])
				}
				return r
			}, text(0)), true, nil
		}
		t := text(2)
		var from, to []any
		if name == "strtr" {
			t = text(0)
			o, err := array(1)
			if err != nil {
				return nil, true, err
			}
			var pairs []string
			for _, k := range o.keys {
				pairs = append(pairs, k, phShow(o.cells[k].v))
			}
			return strings.NewReplacer(pairs...).Replace(t), true, nil
		}
		if o, ok := isArray(arg(0)); ok {
			from = phValues(o)
		} else {
			from = []any{arg(0)}
		}
		if o, ok := isArray(arg(1)); ok {
			to = phValues(o)
		}
		for i, f := range from {
			with := text(1)
			if to != nil {
				if with = ""; i < len(to) {
					with = phShow(to[i])
				}
			}
			if phShow(f) != "" {
				t = strings.ReplaceAll(t, phShow(f), with)
			}
		}
		return t, true, nil
	case "nl2br", "htmlspecialchars", "addslashes", "escapeshellarg", "escapeshellcmd", "urlencode", "rawurlencode":
		if name == "escapeshellarg" {
			return "'" + strings.ReplaceAll(text(0), "'", `'\''`) + "'", true, nil
		}
		if name == "escapeshellcmd" {
			return text(0), true, nil
		}
		return dontKnow("a text that is escaped"), true, nil
	case "sprintf", "vsprintf", "number_format":
		if name == "number_format" {
			return dontKnow("a number as text"), true, nil
		}
		rest := args[min(1, len(args)):]
		if name == "vsprintf" {
			o, err := array(1)
			if err != nil {
				return nil, true, err
			}
			rest = phValues(o)
		}
		v, err := m.phFormat(text(0), rest, s, at)
		return v, true, err
	case "implode", "join":
		o, sep := arg(1), text(0)
		if _, ok := isArray(arg(0)); ok {
			o, sep = arg(0), ""
			if has(1) {
				sep = text(1)
			}
		}
		a, ok := isArray(o)
		if !ok {
			return nil, true, undecided("a text of what is not known")
		}
		var parts []string
		for _, x := range phValues(a) {
			t, err := m.phText(x, s, at)
			if err != nil {
				return nil, true, err
			}
			p, ok := t.(string)
			if !ok {
				return t, true, nil
			}
			parts = append(parts, p)
		}
		return strings.Join(parts, sep), true, nil
	case "explode", "str_split", "preg_split":
		var parts []string
		limit := -1
		if has(2) && arg(2) != nil {
			if limit = int(phInt(arg(2))); limit < -1 || limit == 0 {
				return nil, true, giveUp("a text that is split")
			}
		}
		switch name {
		case "explode":
			if text(0) == "" {
				return nil, true, raise("ValueError", "explode wants a separator")
			}
			parts = strings.SplitN(text(1), text(0), limit)
		case "str_split":
			n := 1
			if has(1) {
				n = max(1, int(phInt(arg(1))))
			}
			for t := text(0); t != ""; {
				k := min(n, len(t))
				parts, t = append(parts, t[:k]), t[k:]
			}
		default:
			re, err := m.phPattern(text(0))
			if err != nil {
				return nil, true, err
			}
			parts = re.Split(text(1), limit)
			if o, ok := arg(3).(*opaque); ok && o.path == "PREG_SPLIT_NO_EMPTY" {
				parts = slices.DeleteFunc(parts, func(t string) bool { return t == "" })
			}
		}
		o := phArray()
		for i, p := range parts {
			if i > maxItems {
				return nil, true, spent("a list that is too long")
			}
			o.set(strconv.Itoa(i), p)
		}
		return o, true, nil
	case "preg_match":
		re, err := m.phPattern(text(0))
		if err != nil {
			return nil, true, err
		}
		loc := re.FindStringSubmatchIndex(text(1))
		found := phArray()
		names := re.SubexpNames()
		flags, _ := arg(3).(integer)
		if o, ok := arg(3).(*opaque); ok {
			flags = phFlags[o.path]
		}
		if flags&phOffsets != 0 {
			return nil, true, undecided("where in a text something was found")
		}
		last := len(loc)/2 - 1
		for last > 0 && loc[2*last] < 0 && flags&phUnmatched == 0 { // the last groups that take no part are not there
			last--
		}
		for i := 0; i <= last; i++ {
			var t any
			if loc[2*i] >= 0 {
				t = text(1)[loc[2*i]:loc[2*i+1]]
			} else if flags&phUnmatched == 0 {
				t = ""
			}
			if names[i] != "" {
				found.set(names[i], t)
			}
			found.set(strconv.Itoa(i), t)
		}
		ref(2, found)
		if loc == nil {
			return integer(0), true, nil
		}
		return integer(1), true, nil
	case "preg_replace":
		re, err := m.phPattern(text(0))
		if err != nil {
			return nil, true, err
		}
		return replaced(re, text(2), true, func(groups []string) string {
			t := text(1)
			for i := len(groups) - 1; i >= 0; i-- {
				t = strings.ReplaceAll(strings.ReplaceAll(t, "$"+strconv.Itoa(i), groups[i]), `\`+strconv.Itoa(i), groups[i])
			}
			return t
		}), true, nil
	case "preg_replace_callback":
		re, err := m.phPattern(text(0))
		if err != nil {
			return nil, true, err
		}
		var failed error
		out := replaced(re, text(2), true, func(groups []string) string {
			l := []any{}
			for _, g := range groups {
				l = append(l, g)
			}
			v, err := call(arg(1), phList(l))
			if err != nil {
				failed = err
			}
			return phShow(v)
		})
		return out, true, failed
	case "preg_quote":
		return regexp.QuoteMeta(text(0)), true, nil
	case "filter_var":
		return m.phFilter(arg(0), arg(1), arg(2))
	case "filter_input":
		return dontKnow("what a request holds"), true, nil
	case "abs":
		n, _ := phNumber(arg(0))
		if i, ok := n.(integer); ok {
			return max(i, -i), true, nil
		}
	case "floor", "ceil", "round", "intdiv", "sqrt", "pow", "fmod":
		a, _ := phNumber(arg(0))
		b, _ := phNumber(arg(1))
		x, _ := toNumber(a)
		y, _ := toNumber(b)
		switch name {
		case "floor":
			return math.Floor(x), true, nil
		case "ceil":
			return math.Ceil(x), true, nil
		case "round":
			if has(1) && y != 0 {
				p := math.Pow(10, y)
				if math.Abs(y) > 12 || math.Abs(x*p) > 1<<52 {
					return dontKnow("a rounded number"), true, nil
				}
				return math.Round(x*p) / p, true, nil
			}
			return math.Round(x), true, nil
		case "intdiv":
			if y == 0 {
				return nil, true, raise("DivisionByZeroError", "Division by zero")
			}
			return integer(math.Trunc(x / y)), true, nil
		case "pow":
			v, err := pyOperate("**", a, b)
			return v, true, err
		case "sqrt":
			return math.Sqrt(x), true, nil
		}
		return math.Mod(x, y), true, nil
	case "max", "min":
		items := args
		if o, ok := isArray(arg(0)); ok && len(args) == 1 {
			items = phValues(o)
		}
		if len(items) == 0 {
			return nil, true, raise("ValueError", "no elements")
		}
		best := items[0]
		for _, x := range items[1:] {
			v, err := m.phOperate(map[string]string{"max": ">", "min": "<"}[name], x, best, s, at)
			if err != nil {
				return nil, true, err
			}
			if v == any(true) {
				best = x
			}
		}
		return best, true, nil
	case "hexdec", "octdec", "bindec":
		i, _ := strconv.ParseInt(strings.TrimPrefix(text(0), "0x"), map[string]int{"hexdec": 16, "octdec": 8, "bindec": 2}[name], 64)
		return integer(i), true, nil
	case "dirname":
		p := text(0)
		n := 1
		if has(1) {
			n = int(phInt(arg(1)))
		}
		for range min(n, 20) {
			p = path.Dir(p)
		}
		return p, true, nil
	case "basename":
		return strings.TrimSuffix(path.Base(text(0)), text(1)), true, nil
	case "array_fill":
		from, ok1 := arg(0).(integer)
		n, ok2 := arg(1).(integer)
		if ok1 && ok2 && n >= 0 && n <= maxItems {
			o := phArray()
			for i := range int(n) {
				o.set(strconv.Itoa(int(from)+i), arg(2))
			}
			return o, true, nil
		}
	case "json_encode":
		if t, ok := m.phJSON(arg(0), 0); ok {
			return t, true, nil
		}
		return dontKnow("a text of JSON"), true, nil
	case "base64_encode":
		return base64.StdEncoding.EncodeToString([]byte(text(0))), true, nil
	case "base64_decode":
		if b, err := base64.StdEncoding.DecodeString(text(0)); err == nil && utf8.Valid(b) {
			return string(b), true, nil
		}
		return dontKnow("bytes"), true, nil
	case "urldecode", "rawurldecode":
		get := url.QueryUnescape
		if name[0] == 'r' {
			get = url.PathUnescape
		}
		if t, err := get(text(0)); err == nil {
			return t, true, nil
		}
		return text(0), true, nil
	case "realpath":
		if p := text(0); strings.HasPrefix(p, "/") {
			return path.Clean(p), true, nil
		}
		return path.Join(root, m.e.Dir, text(0)), true, nil
	case "getcwd":
		return path.Join(root, m.e.Dir), true, nil
	case "chdir":
		return true, true, nil
	case "file_exists", "is_file", "is_readable", "is_dir":
		return m.there(text(0), name != "is_dir", name == "is_dir" || name == "file_exists"), true, nil
	case "socket_close", "fclose", "stream_socket_shutdown":
		if o, ok := arg(0).(*opaque); ok { // it listens no more
			made := strings.TrimSuffix(o.path, "()")
			at := slices.IndexFunc(m.calls, func(c Call) bool { return c.Path == made })
			if at >= 0 && made != "" && slices.IndexFunc(m.calls[at+1:], func(c Call) bool { return c.Path == made }) < 0 {
				m.calls = slices.Delete(slices.Clone(m.calls), at, at+1)
			}
		}
		return nil, true, nil
	case "is_writable", "mkdir", "file_put_contents", "unlink", "touch":
		return dontKnow("what " + name + " gives"), true, nil
	case "file_get_contents", "file", "parse_ini_file", "fopen", "yaml_parse_file", "simplexml_load_file":
		v := m.readFile(text(0))
		if strings.HasPrefix(text(0), "php://") {
			return dontKnow("a stream"), true, nil
		}
		if _, ok := v.(*thrown); ok {
			return false, true, nil
		}
		c, ok := v.(*content)
		if !ok {
			return v, true, nil
		}
		switch name {
		case "file":
			o := phArray()
			flags, _ := arg(1).(*opaque)
			for t := range strings.SplitAfterSeq(c.text, "\n") {
				if t == "" {
					continue
				}
				if flags != nil || arg(1) != nil {
					if t = strings.TrimRight(t, "\r\n"); t == "" {
						continue
					}
				}
				if err := m.phPush(o, t); err != nil {
					return nil, true, err
				}
			}
			return o, true, nil
		case "parse_ini_file", "yaml_parse_file":
			if c.data == nil {
				if name == "parse_ini_file" {
					sections, _ := phTruth(arg(1))
					return m.phIni(c.text, sections, at), true, nil
				}
				return dontKnow("data that is not known"), true, nil
			}
			if name == "parse_ini_file" {
				sections, _ := phTruth(arg(1))
				return m.phIni(c.text, sections, at), true, nil
			}
			x, err := m.parsed(c)
			return x, true, err
		}
		return c, true, nil
	case "parse_ini_string":
		sections, _ := phTruth(arg(1))
		t := text(0)
		if c, ok := arg(0).(*content); ok {
			t = c.text
		}
		return m.phIni(t, sections, at), true, nil
	case "json_decode", "yaml_parse":
		from := any(nil)
		if len(args) > 0 {
			from = args[0]
		}
		if name == "yaml_parse" {
			if _, ok := from.(*content); !ok {
				return dontKnow("data in a text"), true, nil
			}
		}
		x, err := m.parsed(from)
		if err != nil {
			if _, ok := err.(*thrown); ok {
				if strings.Contains(at.f.Between(at.n.Off, at.n.End, 400), "JSON_THROW_ON_ERROR") {
					return nil, true, certainly("JsonException", "Syntax error")
				}
				return nil, true, nil
			}
			return nil, true, err
		}
		assoc, _ := phTruth(arg(1))
		if o, ok := keys["associative"]; ok {
			assoc, _ = phTruth(o)
		}
		return phData(x, !assoc), true, nil
	case "serialize", "md5", "sha1", "hash", "http_build_query", "var_export":
		return dontKnow("a text of data"), true, nil
	case "parse_url":
		if unclear(args, 1) != nil {
			return dontKnow("an address"), true, nil
		}
		u, ok := phURL(text(0))
		if !ok {
			return false, true, nil
		}
		if w, one := arg(1).(*opaque); one {
			if phURLParts[w.path] == "" {
				return dontKnow("a part of an address"), true, nil
			}
			if c := u.cells[phURLParts[w.path]]; c != nil {
				return c.v, true, nil
			}
			return nil, true, nil
		}
		return u, true, nil
	case "getopt":
		v, err := m.phOptions(text(0), arg(1))
		return v, true, err
	case "passthru", "system", "exec", "shell_exec", "proc_open", "popen":
		l := launch{waits: name != "proc_open" && name != "popen"}
		if o, ok := isArray(arg(0)); ok {
			l.words = []any{}
			for _, x := range phValues(o) {
				l.words = append(l.words, phShow(x))
			}
		} else if l.line, ok = arg(0).(string); !ok {
			return nil, true, giveUp("another program that is started")
		}
		if name == "proc_open" {
			l.dir = arg(3)
			if o, ok := isArray(arg(4)); ok {
				l.env = o
			}
		}
		stays, err := m.phStarts(l, at)
		if err != nil {
			return nil, true, err
		}
		switch name {
		case "passthru":
			ref(1, integer(0))
			return nil, true, nil
		case "system":
			ref(1, integer(0))
		case "exec":
			ref(1, dontKnow("what a command prints"))
			ref(2, integer(0))
		case "proc_open", "popen":
			ref(2, dontKnow("the pipes of a process"))
			o := &opaque{path: name + "()", fresh: true}
			if m.started == nil {
				m.started = map[*opaque]bool{}
			}
			m.started[o] = stays
			return o, true, nil
		}
		return dontKnow("what a command prints"), true, nil
	case "proc_close", "pclose":
		if o, ok := arg(0).(*opaque); ok {
			if stays, started := m.started[o]; stays {
				return nil, true, &exit{stays: true}
			} else if started {
				return integer(0), true, nil
			}
		}
	case "pcntl_exec":
		l := launch{words: []any{text(0)}, instead: true}
		if o, ok := isArray(arg(1)); ok {
			for _, x := range phValues(o) {
				l.words = append(l.words, phShow(x))
			}
		}
		if o, ok := isArray(arg(2)); ok {
			l.env = o
		}
		_, err := m.phStarts(l, at)
		return nil, true, err
	case "pcntl_fork":
		m.forks = true
		return integer(0), true, nil
	case "socket_create":
		return &opaque{path: "socket_create()", args: args, fresh: true}, true, nil
	case "socket_set_option", "stream_set_blocking", "stream_context_create", "socket_listen", "socket_set_nonblock":
		return true, true, nil
	}
	return m.phArrays(name, args, refs, array, call, holds, s, at)
}

// phArrays are the functions for arrays.
func (m *machine) phArrays(name string, args []any, refs []*cell, array func(int) (*object, error), call func(any, ...any) (any, error), holds func(any, ...any) (bool, error), s *scope, at spot) (any, bool, error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	ref := func(i int) *object {
		if i < len(refs) && refs[i] != nil {
			o, _ := isArray(refs[i].v)
			return o
		}
		o, _ := isArray(arg(i))
		return o
	}
	switch name {
	case "count", "sizeof":
		if o, ok := isArray(arg(0)); ok {
			return integer(len(o.keys)), true, nil
		}
		if o, ok := arg(0).(*object); ok {
			if v, done, err := m.phOwn(o, "count", nil, at); done || err != nil {
				return v, true, err
			}
		}
		return nil, true, mistaken(arg(0), nil, "TypeError", "count wants an array")
	case "range":
		from, ok1 := arg(0).(integer)
		to, ok2 := arg(1).(integer)
		step := integer(1)
		if x, ok := arg(2).(integer); ok && x > 0 {
			step = x
		}
		if !ok1 || !ok2 || to-from > maxItems || from-to > maxItems {
			return nil, true, giveUp("a range")
		}
		var l []any
		for i := from; from <= to && i <= to || from > to && i >= to; {
			l = append(l, i)
			if from <= to {
				i += step
			} else {
				i -= step
			}
		}
		return phList(l), true, nil
	case "array_merge", "array_replace", "array_merge_recursive", "array_replace_recursive":
		o := phArray()
		for i := range args {
			a, err := array(i)
			if err != nil {
				return nil, true, err
			}
			for _, k := range a.keys {
				v, err := m.phCopy(a.cells[k].v, 0)
				if err != nil {
					return nil, true, err
				}
				_, isInt := phKeyOf(k).(integer)
				if isInt && strings.Contains(name, "merge") {
					if err := m.phPush(o, v); err != nil {
						return nil, true, err
					}
					continue
				}
				if old := o.cells[k]; old != nil && strings.HasSuffix(name, "recursive") {
					_, x := isArray(old.v)
					_, y := isArray(v)
					if x && y {
						w, _, err := m.phArrays(name, []any{old.v, v}, nil, func(i int) (*object, error) { return []*object{old.v.(*object), v.(*object)}[i], nil }, call, holds, s, at)
						if err != nil {
							return nil, true, err
						}
						v = w
					} else if name == "array_merge_recursive" {
						return nil, true, giveUp("values that are put together")
					}
				}
				o.set(k, v)
			}
		}
		return o, true, nil
	case "array_combine":
		a, err := array(0)
		if err != nil {
			return nil, true, err
		}
		b, err := array(1)
		if err != nil {
			return nil, true, err
		}
		o := phArray()
		values := phValues(b)
		for i, k := range phValues(a) {
			if key, ok := phKey(k); ok && i < len(values) {
				o.set(key, values[i])
			}
		}
		return o, true, nil
	case "array_fill_keys":
		a, err := array(0)
		if err != nil {
			return nil, true, err
		}
		o := phArray()
		for _, k := range phValues(a) {
			if key, ok := phKey(k); ok {
				o.set(key, arg(1))
			}
		}
		return o, true, nil
	}
	switch name {
	case "array_keys", "array_values", "array_filter", "array_flip", "array_reverse", "array_unique", "array_slice", "array_column", "array_reduce", "array_key_first", "array_key_last", "array_sum", "array_product", "array_search", "in_array", "array_key_exists", "key_exists", "array_map", "array_walk", "array_intersect_key", "array_diff_key", "array_diff", "array_intersect", "array_is_list", "array_find", "array_any", "array_all", "array_chunk", "iterator_to_array", "array_change_key_case",
		"array_push", "array_pop", "array_shift", "array_unshift", "array_splice", "sort", "rsort", "ksort", "krsort", "asort", "arsort", "usort", "uksort", "uasort", "current", "reset", "end", "next", "key", "array_pad":
	default:
		return nil, false, nil
	}
	at0 := 0
	switch name {
	case "array_map", "array_search", "in_array", "array_key_exists", "key_exists":
		at0 = 1
	}
	o, err := array(at0)
	if err != nil {
		return nil, true, err
	}
	values := phValues(o)
	switch name {
	case "array_keys":
		var l []any
		for _, k := range o.keys {
			if len(args) > 1 { // those of what is searched for
				same, ok := phEqual(o.cells[k].v, arg(1), arg(2) == true)
				if !ok {
					return dontKnow("some keys of an array"), true, nil
				} else if !same {
					continue
				}
			}
			l = append(l, phKeyOf(k))
		}
		return phList(l), true, nil
	case "array_values", "iterator_to_array":
		return phList(values), true, nil
	case "array_filter":
		r := phArray()
		mode, _ := arg(2).(*opaque)
		for _, k := range o.keys {
			v := o.cells[k].v
			keep, ok := phTruth(v)
			var err error
			switch {
			case arg(1) == nil:
				if !ok {
					err = undecided("whether something is kept")
				}
			case mode != nil && mode.path == "ARRAY_FILTER_USE_KEY":
				keep, err = holds(arg(1), phKeyOf(k))
			case mode != nil:
				keep, err = holds(arg(1), v, phKeyOf(k))
			default:
				keep, err = holds(arg(1), v)
			}
			if err != nil {
				return nil, true, err
			}
			if keep {
				r.set(k, v)
			}
		}
		return r, true, nil
	case "array_map":
		r := phArray()
		var more []*object
		for i := range args[min(2, len(args)):] {
			a, err := array(i + 2)
			if err != nil {
				return nil, true, err
			}
			more = append(more, a)
		}
		for i, k := range o.keys {
			with := []any{o.cells[k].v}
			for _, a := range more {
				if vs := phValues(a); i < len(vs) {
					with = append(with, vs[i])
				} else {
					with = append(with, nil)
				}
			}
			v, err := call(arg(0), with...)
			if err != nil {
				return nil, true, err
			}
			if more != nil {
				k = strconv.Itoa(i)
			}
			r.set(k, v)
		}
		return r, true, nil
	case "array_walk":
		for _, k := range slices.Clone(o.keys) {
			c := o.cells[k]
			f, ok := arg(1).(*function)
			if !ok {
				return nil, true, giveUp("what is done with each")
			}
			if _, err := m.phInvoke(f, f.this, []any{c.v, phKeyOf(k)}, []*cell{c}, at); err != nil {
				return nil, true, err
			}
		}
		return true, true, nil
	case "array_find", "array_any", "array_all":
		for _, k := range o.keys {
			ok, err := holds(arg(1), o.cells[k].v, phKeyOf(k))
			if err != nil {
				return nil, true, err
			}
			switch {
			case name == "array_find" && ok:
				return o.cells[k].v, true, nil
			case name == "array_any" && ok:
				return true, true, nil
			case name == "array_all" && !ok:
				return false, true, nil
			}
		}
		return map[string]any{"array_find": nil, "array_any": false, "array_all": true}[name], true, nil
	case "array_flip":
		r := phArray()
		for _, k := range o.keys {
			if key, ok := phKey(o.cells[k].v); ok {
				r.set(key, phKeyOf(k))
			}
		}
		return r, true, nil
	case "array_reverse":
		r := phArray()
		for _, k := range slices.Backward(o.keys) {
			if _, isInt := phKeyOf(k).(integer); isInt {
				if err := m.phPush(r, o.cells[k].v); err != nil {
					return nil, true, err
				}
			} else {
				r.set(k, o.cells[k].v)
			}
		}
		return r, true, nil
	case "array_unique", "array_diff", "array_intersect", "array_intersect_key", "array_diff_key":
		r := phArray()
		for _, k := range o.keys {
			v := o.cells[k].v
			in := false
			if name == "array_unique" {
				for _, x := range phValues(r) {
					same, _ := phEqual(v, x, false)
					in = in || same
				}
			} else {
				b, err := array(1)
				if err != nil {
					return nil, true, err
				}
				if strings.HasSuffix(name, "_key") {
					in = b.cells[k] != nil
				} else {
					for _, x := range phValues(b) {
						in = in || phShow(v) == phShow(x)
					}
				}
			}
			if in == strings.HasPrefix(name, "array_intersect") {
				r.set(k, v)
			}
		}
		return r, true, nil
	case "array_slice":
		from := int(phInt(arg(1)))
		if from < 0 {
			from = max(0, from+len(o.keys))
		}
		from = min(from, len(o.keys))
		to := len(o.keys)
		if n := arg(2); n != nil {
			if to = from + int(phInt(n)); phInt(n) < 0 {
				to = len(o.keys) + int(phInt(n))
			}
		}
		to = min(to, len(o.keys))
		r := phArray()
		for _, k := range o.keys[from:max(from, to)] {
			if _, isInt := phKeyOf(k).(integer); isInt {
				if err := m.phPush(r, o.cells[k].v); err != nil {
					return nil, true, err
				}
			} else {
				r.set(k, o.cells[k].v)
			}
		}
		return r, true, nil
	case "array_column":
		r := phArray()
		for _, x := range values {
			a, ok := x.(*object)
			if !ok {
				return nil, true, undecided("a column of what is not known")
			}
			key, _ := phKey(arg(1))
			c := a.cells[key]
			v := any(a)
			if arg(1) != nil {
				if c == nil {
					continue
				}
				v = c.v
			}
			if arg(2) != nil {
				by, _ := phKey(arg(2))
				if k := a.cells[by]; k != nil {
					if kk, ok := phKey(k.v); ok {
						r.set(kk, v)
						continue
					}
				}
			}
			if err := m.phPush(r, v); err != nil {
				return nil, true, err
			}
		}
		return r, true, nil
	case "array_reduce":
		acc := arg(2)
		for _, x := range values {
			var err error
			if acc, err = call(arg(1), acc, x); err != nil {
				return nil, true, err
			}
		}
		return acc, true, nil
	case "array_key_first", "array_key_last":
		if len(o.keys) == 0 {
			return nil, true, nil
		}
		if name == "array_key_first" {
			return phKeyOf(o.keys[0]), true, nil
		}
		return phKeyOf(o.keys[len(o.keys)-1]), true, nil
	case "array_sum", "array_product":
		acc := any(integer(0))
		sign := "+"
		if name == "array_product" {
			acc, sign = integer(1), "*"
		}
		for _, x := range values {
			var err error
			if acc, err = m.phOperate(sign, acc, x, s, at); err != nil {
				return nil, true, err
			}
		}
		return acc, true, nil
	case "array_search", "in_array":
		strict, _ := phTruth(arg(2))
		for _, k := range o.keys {
			same, ok := phEqual(o.cells[k].v, arg(0), strict)
			if !ok {
				return dontKnow("whether an array holds something"), true, nil
			}
			if same {
				if name == "in_array" {
					return true, true, nil
				}
				return phKeyOf(k), true, nil
			}
		}
		return false, true, nil
	case "array_key_exists", "key_exists":
		key, ok := phKey(arg(0))
		if !ok {
			return nil, true, undecided("a key that is not known")
		}
		if _, env := arg(1).(*envMap); env {
			_, there := m.lookup(key, at)
			return there, true, nil
		}
		return o.cells[key] != nil, true, nil
	case "array_is_list":
		for i, k := range o.keys {
			if k != strconv.Itoa(i) {
				return false, true, nil
			}
		}
		return true, true, nil
	case "array_chunk":
		n := int(phInt(arg(1)))
		if n < 1 {
			return nil, true, raise("ValueError", "array_chunk wants a size")
		}
		var l []any
		for i := 0; i < len(values); i += n {
			l = append(l, phList(slices.Clone(values[i:min(len(values), i+n)])))
		}
		return phList(l), true, nil
	case "array_change_key_case":
		r := phArray()
		for _, k := range o.keys {
			r.set(strings.ToLower(k), o.cells[k].v)
		}
		if arg(1) != nil {
			return nil, true, giveUp("keys in another case")
		}
		return r, true, nil
	case "current", "reset":
		if len(values) == 0 {
			return false, true, nil
		}
		return values[0], true, nil
	case "end":
		if len(values) == 0 {
			return false, true, nil
		}
		return values[len(values)-1], true, nil
	case "next", "key", "array_splice", "array_pad":
		return nil, true, giveUp("the function %s", name)
	}
	// Those that change the array.
	a := ref(0)
	if a == nil {
		return nil, true, giveUp("an array that is changed")
	}
	renumber := func(items []any) {
		r := phList(items)
		a.keys, a.cells = r.keys, r.cells
	}
	switch name {
	case "array_push":
		for _, x := range args[1:] {
			if err := m.phPush(a, x); err != nil {
				return nil, true, err
			}
		}
		return integer(len(a.keys)), true, nil
	case "array_pop", "array_shift":
		if len(a.keys) == 0 {
			return nil, true, nil
		}
		k := a.keys[0]
		if name == "array_pop" {
			k = a.keys[len(a.keys)-1]
		}
		v := a.cells[k].v
		a.remove(k)
		if name == "array_shift" {
			r := phArray()
			for _, k := range a.keys {
				if _, isInt := phKeyOf(k).(integer); isInt {
					if err := m.phPush(r, a.cells[k].v); err != nil {
						return nil, true, err
					}
				} else {
					r.set(k, a.cells[k].v)
				}
			}
			a.keys, a.cells = r.keys, r.cells
		}
		return v, true, nil
	case "array_unshift":
		renumber(append(slices.Clone(args[1:]), values...))
		return integer(len(a.keys)), true, nil
	}
	// Sorting.
	keys := slices.Clone(a.keys)
	var failed error
	slices.SortStableFunc(keys, func(p, q string) int {
		x, y := a.cells[p].v, a.cells[q].v
		if strings.HasPrefix(name, "k") || strings.HasPrefix(name, "uk") {
			x, y = phKeyOf(p), phKeyOf(q)
		}
		var v any
		var err error
		if strings.HasPrefix(name, "u") {
			v, err = call(arg(1), x, y)
		} else {
			v, err = m.phOperate("<=>", x, y, s, at)
		}
		if err != nil {
			failed = err
			return 0
		}
		n := int(phInt(v))
		if strings.Contains(name, "r") && name != "sort" && name != "usort" && name != "ksort" && name != "asort" && name != "uksort" && name != "uasort" {
			n = -n
		}
		return n
	})
	if failed != nil {
		return nil, true, failed
	}
	if name == "sort" || name == "rsort" || name == "usort" {
		var l []any
		for _, k := range keys {
			l = append(l, a.cells[k].v)
		}
		renumber(l)
	} else {
		a.keys = keys
	}
	return true, true, nil
}

// phData makes arrays of data that was read, or objects of the maps in it.
func phData(v any, objects bool) any {
	o := phArray()
	switch v := v.(type) {
	case *list:
		for i, x := range v.items {
			o.set(strconv.Itoa(i), phData(x, objects))
		}
		return o
	case *object:
		if objects {
			o = newObject()
			o.class = &class{name: "stdClass", builtin: true, statics: newObject(), methods: newObject()}
		}
		for _, k := range v.keys {
			o.set(k, phData(v.cells[k].v, objects))
		}
		return o
	}
	return v
}

// phIni reads settings of the form that parse_ini_file takes.
func (m *machine) phIni(text string, sections bool, at spot) any {
	o := phArray()
	into := o
	for row := range strings.SplitSeq(text, "\n") {
		row = strings.TrimSpace(row)
		switch {
		case row == "" || row[0] == ';' || row[0] == '#':
		case row[0] == '[' && strings.HasSuffix(row, "]"):
			if sections {
				into = phArray()
				o.set(strings.TrimSpace(row[1:len(row)-1]), into)
			}
		default:
			k, v, ok := strings.Cut(row, "=")
			if !ok {
				continue
			}
			k, v = strings.TrimSpace(k), strings.TrimSpace(v)
			env := func(t string) string { // ${NAME}, outside of single quotes
				for {
					i := strings.Index(t, "${")
					j := -1
					if i >= 0 {
						j = strings.IndexByte(t[i:], '}')
					}
					if j < 0 {
						return t
					}
					x, _ := m.lookup(t[i+2:i+j], at)
					t = t[:i] + x + t[i+j+1:]
				}
			}
			if len(v) > 1 && (v[0] == '"' || v[0] == '\'') {
				q := v[0]
				if i := strings.IndexByte(v[1:], q); i >= 0 {
					v = v[1 : i+1]
				}
				if q == '"' && !strings.Contains(v, "$${") {
					v = env(v)
				}
			} else {
				if i := strings.IndexByte(v, ';'); i >= 0 {
					v = strings.TrimSpace(v[:i])
				}
				switch strings.ToLower(v) {
				case "true", "on", "yes":
					v = "1"
				case "false", "off", "no", "none", "null":
					v = ""
				}
				v = env(v)
			}
			if name, ok := strings.CutSuffix(k, "[]"); ok {
				l, _ := isArray(cellOf(into, name))
				if l == nil {
					l = phArray()
					into.set(name, l)
				}
				if m.phPush(l, v) != nil {
					return dontKnow("settings with lists")
				}
				continue
			}
			into.set(k, v)
		}
	}
	return o
}

// phFilter is filter_var for numbers and truth.
func (m *machine) phFilter(v, what, opts any) (any, bool, error) {
	w, _ := what.(*opaque)
	if w == nil {
		return phShow(v), what == nil, nil
	}
	fallback := any(false)
	lo, hi := math.Inf(-1), math.Inf(1)
	if o, ok := isArray(opts); ok {
		if c := o.cells["options"]; c != nil {
			if in, ok := isArray(c.v); ok {
				if d := in.cells["default"]; d != nil {
					fallback = d.v
				}
				if d := in.cells["min_range"]; d != nil {
					lo, _ = toNumber(d.v)
				}
				if d := in.cells["max_range"]; d != nil {
					hi, _ = toNumber(d.v)
				}
			}
		}
		if c := o.cells["flags"]; c != nil {
			if f, ok := c.v.(*opaque); ok && f.path == "FILTER_NULL_ON_FAILURE" {
				fallback = nil
			}
		}
	}
	if f, ok := opts.(*opaque); ok && f.path == "FILTER_NULL_ON_FAILURE" {
		fallback = nil
	}
	t := strings.TrimSpace(phShow(v))
	switch w.path {
	case "FILTER_VALIDATE_INT":
		i, err := strconv.ParseInt(t, 10, 64)
		if err != nil || len(t) > 1 && t[0] == '0' || float64(i) < lo || float64(i) > hi {
			return fallback, true, nil
		}
		return integer(i), true, nil
	case "FILTER_VALIDATE_BOOLEAN", "FILTER_VALIDATE_BOOL":
		switch strings.ToLower(t) {
		case "1", "true", "on", "yes":
			return true, true, nil
		case "0", "false", "off", "no", "":
			return false, true, nil
		}
		return fallback, true, nil
	case "FILTER_VALIDATE_IP":
		if strings.Count(t, ".") == 3 && strings.Trim(t, "0123456789.") == "" || strings.Contains(t, ":") {
			return t, true, nil
		}
		return fallback, true, nil
	}
	return dontKnow("what a filter gives"), true, nil
}

func (m *machine) phFormat(format string, args []any, s *scope, at spot) (any, error) {
	var failed error
	unknown := false
	out, ok := verbs(format, args, func(verb byte, v any) (any, bool) {
		t, err := m.phText(v, s, at)
		if err != nil {
			failed = err
			return "", false
		}
		text, isText := t.(string)
		unknown = unknown || !isText
		switch verb {
		case 's':
			return text, isText
		case 'd', 'u', 'x', 'X', 'o', 'b':
			return phInt(v), isText
		case 'f', 'F':
			f, ok := toNumber(v)
			return f, ok && isText
		case 'c':
			return string(rune(phInt(v))), isText
		}
		return "", false
	})
	switch {
	case failed != nil:
		return nil, failed
	case unknown:
		return dontKnow("a text with what is not known"), nil
	case !ok:
		return nil, giveUp("a format that is not followed")
	}
	return out, nil
}

// phOptions is getopt.
func (m *machine) phOptions(short string, long any) (any, error) {
	takes := map[string]int{} // 0: a flag, 1: a value, 2: a value or none
	add := func(w string) {
		name := strings.TrimRight(w, ":")
		takes[name] = len(w) - len(name)
	}
	for i := 0; i < len(short); {
		j := i + 1
		for j < len(short) && short[j] == ':' {
			j++
		}
		add(short[i:j])
		i = j
	}
	if o, ok := isArray(long); ok {
		for _, x := range phValues(o) {
			add(phShow(x))
		}
	}
	out := phArray()
	argv := m.argv()[1:]
	for i := 0; i < len(argv); i++ {
		w, ok := argv[i].(string)
		if !ok {
			return nil, undecided("an argument that is not known")
		}
		if w == "--" || !strings.HasPrefix(w, "-") || w == "-" {
			break
		}
		var name, value string
		has := false
		if strings.HasPrefix(w, "--") {
			name, value, has = strings.Cut(w[2:], "=")
		} else {
			name = w[1:2]
			if len(w) > 2 {
				value, has = strings.TrimPrefix(w[2:], "="), true
			}
		}
		n, known := takes[name]
		switch {
		case !known:
		case n == 0:
			out.set(name, false)
		case !has && n == 1 && i+1 < len(argv):
			i++
			out.set(name, argv[i])
		case has:
			out.set(name, value)
		case n == 2:
			out.set(name, false)
		}
	}
	return out, nil
}

// ownLoader reports whether the loader of classes where Composer puts its own is one that
// the program brings along.
func (m *machine) ownLoader(p string) bool {
	text, ok := m.e.Loader.Text(p)
	return ok && strings.Contains(text, "spl_autoload_register") && !strings.Contains(text, "autoload_real.php")
}
