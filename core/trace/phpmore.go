package trace

import (
	"encoding/hex"
	"encoding/json"
	"hash/crc32"
	"net/url"
	"path"
	"strconv"
	"strings"

	"ubique/core/code"
)

// phCore are functions that every PHP has (PHP manual, "Function and Method
// listing": core, standard, json, pcre, ctype, filter, date).
var phCore = words(`strlen strtolower strtoupper str_replace str_contains str_starts_with str_ends_with substr trim rtrim ltrim explode implode sprintf printf number_format
	getenv putenv intdiv is_int is_string is_array is_null is_numeric in_array array_map array_filter array_merge array_keys array_values array_key_exists array_is_list count max min
	json_encode json_decode preg_match preg_replace preg_split file_get_contents file_put_contents file_exists is_file is_dir realpath dirname basename stream_socket_server
	stream_socket_accept stream_select random_int random_bytes hrtime microtime time date filter_var ctype_digit call_user_func call_user_func_array func_get_args spl_autoload_register
	set_error_handler set_exception_handler register_shutdown_function error_log ini_set ini_get parse_ini_file parse_url http_build_query password_hash hash base64_encode usleep sleep`)

// phHas tells whether there is a function of a name; ok is false where that depends
// on what is installed.
func (m *machine) phHas(name string) (yes, ok bool) {
	low := strings.ToLower(strings.TrimPrefix(name, "\\"))
	if m.ph().functions[low] != nil {
		return true, true
	}
	if phCore[low] {
		return true, true
	}
	for _, f := range m.e.Loader.Loaded() { // one of the tree that is not declared yet
		if f.Lang != code.PHP || f.Body == nil {
			continue
		}
		found := false
		f.Body.Walk(func(n *code.Node) bool {
			found = found || n.Is(code.Func) && strings.EqualFold(n.Name, low)
			return !found
		})
		if found {
			return false, true
		}
	}
	family, _, several := strings.Cut(low, "_")
	return false, !(several && phFamilies[family])
}

// phFamilies are how the names of functions begin that a PHP has or has not.
var phFamilies = words(`array str is file stream date preg json ctype mb pcntl posix socket curl apcu opcache sodium openssl iconv gc hash intl gmp bc imap ldap pg mysqli sqlite igbinary msgpack random
	http headers header session get set ob spl class func call error restore register shm sem msg readline zend uv event`)

// phJSON is what json_encode makes of a value; ok is false where something in it is
// not known.
func (m *machine) phJSON(v any, depth int) (text string, ok bool) {
	if depth > 20 || m.use(1) != nil {
		return "", false
	}
	switch v := v.(type) {
	case nil:
		return "null", true
	case bool, integer, float64:
		return show(v), true
	case string:
		b, err := json.Marshal(v)
		return strings.NewReplacer(`\u003c`, "<", `\u003e`, ">", `\u0026`, "&", "/", `\/`).Replace(string(b)), err == nil
	case *object:
		if v.class != nil && !v.dict && v.class.name != "stdClass" {
			return "", false
		}
		listed := v.dict || v.class == nil
		for i, k := range v.keys {
			listed = listed && k == show(integer(i))
		}
		var parts []string
		for _, k := range v.keys {
			t, ok := m.phJSON(v.cells[k].v, depth+1)
			if !ok {
				return "", false
			}
			if !listed {
				name, _ := json.Marshal(k)
				t = string(name) + ":" + t
			}
			parts = append(parts, t)
		}
		if listed {
			return "[" + strings.Join(parts, ",") + "]", true
		}
		return "{" + strings.Join(parts, ",") + "}", true
	}
	return "", false
}

// phFurther calls further functions of texts and numbers; done is false for any other (PHP
// manual, "String Functions", "Math", "Variable handling").
func (m *machine) phFurther(name string, arg func(int) any, text func(int) string, ref func(int, any), refs []*cell, count int) (v any, done bool, err error) {
	switch name {
	case "parse_str":
		q, err := url.ParseQuery(text(0))
		if err != nil || strings.Contains(text(0), "[") {
			ref(1, dontKnow("what parse_str puts into a variable"))
			return nil, true, nil
		}
		o := phArray()
		for part := range strings.SplitSeq(text(0), "&") {
			k, _, _ := strings.Cut(part, "=")
			if k, err := url.QueryUnescape(k); err == nil && k != "" {
				o.set(strings.NewReplacer(".", "_", " ", "_").Replace(k), q[k][len(q[k])-1])
			}
		}
		ref(1, o)
		return nil, true, nil
	case "preg_match_all", "sscanf", "similar_text", "settype", "mb_parse_str", "getmxrr", "openssl_sign":
		for _, c := range refs { // it may change what it is given
			if c != nil && name != "preg_match_all" {
				c.v = dontKnow("what " + name + " puts into a variable")
			}
		}
		if name == "preg_match_all" {
			ref(2, dontKnow("what "+name+" found"))
		}
		return nil, false, nil
	case "var_export":
		if yes, _ := arg(1).(bool); yes {
			switch x := arg(0).(type) {
			case nil:
				return "NULL", true, nil
			case bool, integer:
				return show(x), true, nil
			case string:
				return "'" + strings.NewReplacer(`\`, `\\`, "'", `\'`).Replace(x) + "'", true, nil
			}
		}
	case "number_format":
		if x, _ := phNumber(arg(0)); count < 3 {
			f, ok := toNumber(x)
			places, _ := arg(1).(integer)
			if ok && places >= 0 && places < 12 {
				t := strconv.FormatFloat(f, 'f', int(places), 64)
				whole, rest, has := strings.Cut(strings.TrimPrefix(t, "-"), ".")
				for i := len(whole) - 3; i > 0; i -= 3 {
					whole = whole[:i] + "," + whole[i:]
				}
				if has {
					whole += "." + rest
				}
				if strings.HasPrefix(t, "-") {
					whole = "-" + whole
				}
				return whole, true, nil
			}
		}
	case "pathinfo":
		base := path.Base(text(0))
		ext := path.Ext(base)
		if o, ok := arg(1).(*opaque); ok {
			switch o.path {
			case "PATHINFO_EXTENSION":
				return strings.TrimPrefix(ext, "."), true, nil
			case "PATHINFO_FILENAME":
				return strings.TrimSuffix(base, ext), true, nil
			case "PATHINFO_BASENAME":
				return base, true, nil
			case "PATHINFO_DIRNAME":
				return path.Dir(text(0)), true, nil
			}
		}
	case "base_convert", "dechex", "decbin", "decoct":
		from, to := integer(10), map[string]integer{"dechex": 16, "decbin": 2, "decoct": 8}[name]
		if name == "base_convert" {
			a, _ := phNumber(arg(1))
			b, _ := phNumber(arg(2))
			from, _ = a.(integer)
			to, _ = b.(integer)
		}
		if from >= 2 && from <= 36 && to >= 2 && to <= 36 {
			if n, err := strconv.ParseInt(strings.ToLower(text(0)), int(from), 64); err == nil && n >= 0 {
				return strconv.FormatInt(n, int(to)), true, nil
			}
		}
	case "bin2hex":
		return hex.EncodeToString([]byte(text(0))), true, nil
	case "crc32":
		return integer(crc32.ChecksumIEEE([]byte(text(0)))), true, nil
	case "nl2br":
		if !strings.ContainsAny(text(0), "\r\n") {
			return text(0), true, nil
		}
	}
	return nil, false, nil
}
