package trace

import (
	"strconv"
	"strings"
)

// pyURL is what urlsplit and urlparse make of an address: a named tuple whose host and
// port are read from its second part (Python 3.14 library, "urllib.parse").
func pyURL(text, scheme string, params bool) any {
	whole := text
	text = strings.TrimLeft(text, "\x00\x01\x02\x03\x04\x05\x06\x07\x08\t\n\v\f\r ")
	if before, rest, ok := strings.Cut(text, ":"); ok && before != "" && schemeLike(before) {
		scheme, text = strings.ToLower(before), rest
	}
	netloc, query, fragment, param := "", "", "", ""
	if rest, ok := strings.CutPrefix(text, "//"); ok {
		end := strings.IndexAny(rest, "/?#")
		if end < 0 {
			end = len(rest)
		}
		netloc, text = rest[:end], rest[end:]
	}
	if strings.Contains(netloc, "[") != strings.Contains(netloc, "]") {
		return dontKnow("an address that is no address")
	}
	text, fragment, _ = strings.Cut(text, "#")
	text, query, _ = strings.Cut(text, "?")
	names := []any{"scheme", "netloc", "path", "query", "fragment"}
	if params {
		names = []any{"scheme", "netloc", "path", "params", "query", "fragment"}
		if i := strings.LastIndexByte(text, '/'); strings.Contains(text[i+1:], ";") {
			at := i + 1 + strings.IndexByte(text[i+1:], ';')
			text, param = text[:at], text[at+1:]
		}
	}
	o := newObject()
	o.class = &class{name: "SplitResult", data: true, methods: newObject(), statics: newObject(), tupled: names}
	parts := map[any]string{"scheme": scheme, "netloc": netloc, "path": text, "params": param, "query": query, "fragment": fragment}
	for _, n := range names {
		o.set(n.(string), parts[n])
	}
	userinfo, at, hasUser := "", netloc, false
	if i := strings.LastIndexByte(netloc, '@'); i >= 0 {
		userinfo, at, hasUser = netloc[:i], netloc[i+1:], true
	}
	user, password, hasPassword := strings.Cut(userinfo, ":")
	nothing := func(s string, given bool) any {
		if !given {
			return nil
		}
		return s
	}
	host, port := at, ""
	if i := strings.IndexByte(at, '['); i >= 0 {
		host, port, _ = strings.Cut(at[i+1:], "]")
		_, port, _ = strings.Cut(port, ":")
	} else {
		host, port, _ = strings.Cut(at, ":")
	}
	number := any(nil)
	if port != "" {
		number = dontKnow("a port that is no number")
		if n, err := strconv.Atoi(port); err == nil && n >= 0 && n <= 65535 && strings.Trim(port, "0123456789") == "" {
			number = integer(n)
		}
	}
	// They are no fields of the tuple.
	for name, v := range map[string]any{"hostname": nothing(strings.ToLower(host), host != ""), "port": number, "username": nothing(user, hasUser), "password": nothing(password, hasPassword)} {
		o.class.methods.set(name, &function{name: name, getter: true, native: func(*machine, any, []any, map[string]any, spot) (any, error) { return v, nil }})
	}
	o.class.methods.set("geturl", &function{name: "geturl", native: func(*machine, any, []any, map[string]any, spot) (any, error) { return whole, nil }})
	return o
}

// schemeLike reports whether a text may stand before the colon of an address.
func schemeLike(s string) bool {
	for i, c := range []byte(s) {
		letter := c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z'
		if !letter && (i == 0 || !(c >= '0' && c <= '9') && c != '+' && c != '-' && c != '.') {
			return false
		}
	}
	return true
}
