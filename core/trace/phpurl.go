package trace

import "strings"

// What parse_url of PHP makes of an address (PHP manual, "parse_url"; measured with
// PHP 8.2, 2026-11). It does not look whether an address is one: a text without a
// scheme or two slashes is a path.

// phURLParts are the parts that it is asked for alone, by the constant.
var phURLParts = map[string]string{"PHP_URL_SCHEME": "scheme", "PHP_URL_HOST": "host", "PHP_URL_PORT": "port", "PHP_URL_USER": "user", "PHP_URL_PASS": "pass", "PHP_URL_PATH": "path", "PHP_URL_QUERY": "query", "PHP_URL_FRAGMENT": "fragment"}

// phURL is an address in its parts; ok is false where PHP gives false.
func phURL(text string) (u *object, ok bool) {
	u = phArray()
	colon := strings.IndexByte(text, ':')
	schemed := colon > 0 && strings.Trim(strings.ToLower(text[:colon]), "abcdefghijklmnopqrstuvwxyz0123456789+-.") == ""
	rest, hosted := text, strings.HasPrefix(text, "//")
	early := colon >= 0 && colon < len(text)-1 && !strings.ContainsAny(text[:colon], "?#")
	switch {
	case !hosted && early && phPorted(text[colon+1:]), colon == 0 && len(text) > 1 && text[1] == '/':
		hosted, rest = true, "//"+text
	case schemed:
		u.set("scheme", text[:colon])
		rest = text[colon+1:]
		hosted = strings.HasPrefix(rest, "//")
		if strings.HasPrefix(rest, "///") {
			if !strings.EqualFold(text[:colon], "file") {
				return nil, false
			}
			rest, hosted = rest[2:], false
		}
	}
	if hosted {
		rest = rest[2:]
		end := strings.IndexAny(rest, "/?#")
		if end < 0 {
			end = len(rest)
		}
		if !phAuthority(u, rest[:end]) {
			return nil, false
		}
		rest = rest[end:]
	}
	rest, fragment, inside := strings.Cut(rest, "#")
	path, query, asked := strings.Cut(rest, "?")
	if path != "" {
		u.set("path", path)
	}
	if asked {
		u.set("query", query)
	}
	if inside {
		u.set("fragment", fragment)
	}
	return u, true
}

// phPorted reports whether what follows a colon is a port, up to the end or a slash.
func phPorted(text string) bool {
	text, _, _ = strings.Cut(text, "/")
	return text != "" && len(text) < 6 && strings.Trim(text, "0123456789") == ""
}

// phAuthority reads who, the host and the port.
func phAuthority(u *object, text string) bool {
	who, port := "", ""
	if i := strings.LastIndexByte(text, '@'); i >= 0 {
		who, text = text[:i], text[i+1:]
	}
	host := text
	if i := strings.LastIndexByte(text, ':'); i >= 0 && i > strings.LastIndexByte(text, ']') {
		host, port = text[:i], text[i+1:]
	}
	if host == "" {
		return false
	}
	u.set("host", host)
	if port != "" {
		digits := port[:len(port)-len(strings.TrimLeft(port, "0123456789"))]
		n, ok := atoi(digits) // what comes after them is left
		if !ok || n > 65535 || len(port) > 5 {
			return false
		}
		u.set("port", integer(n))
	}
	if who != "" {
		name, secret, both := strings.Cut(who, ":")
		u.set("user", name)
		if both {
			u.set("pass", secret)
		}
	}
	return true
}
