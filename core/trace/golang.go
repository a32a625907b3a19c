package trace

import (
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// What programs of Go do (The Go Programming Language Specification, 1.26): a
// package is all files of a folder, a structure is an object of its type, and
// several results are a list. Pointers are the objects themselves.

// results is a list of results.
func results(v ...any) *list { return &list{items: v, tuple: true} }

func goError(text string) any {
	o := newObject()
	o.class = &class{name: "error", builtin: true, statics: newObject(), methods: newObject()}
	o.set("message", text)
	return o
}

// goAddrError is an error of package net about an address.
func goAddrError(text string) any {
	o := goError(text).(*object)
	o.holds = "net.AddrError"
	return o
}

// goMethod calls a method of what the language has; done is false for any other.
func (m *machine) goMethod(base any, name string, args []any, s *scope, at spot) (v any, done bool, err error) {
	switch b := base.(type) {
	case *object:
		if b.class == nil || b.class.node != nil {
			return nil, false, nil
		}
		switch b.class.name + "." + name {
		case "error.Error":
			msg, _ := b.get("message")
			return msg, true, nil
		case "bufio.Scanner.Scan":
			rest := b.cells["rest"].v.(*list)
			if len(rest.items) == 0 {
				return false, true, nil
			}
			b.set("line", strings.TrimRight(show(rest.items[0]), "\r\n"))
			rest.items = rest.items[1:]
			return true, true, nil
		case "bufio.Scanner.Text":
			line, _ := b.get("line")
			return line, true, nil
		case "bufio.Scanner.Err", "bufio.Scanner.Buffer", "bufio.Scanner.Split":
			return nil, true, nil
		case "url.Port", "url.Hostname", "url.String":
			v, _ := b.get(name)
			return v, true, nil
		case "regexp.MatchString":
			re := b.cells["re"].v.(*regexp.Regexp)
			if !known(first(args)) {
				return dontKnow("whether a text matches"), true, nil
			}
			return re.MatchString(show(first(args))), true, nil
		case "regexp.FindStringSubmatch":
			re := b.cells["re"].v.(*regexp.Regexp)
			found := re.FindStringSubmatch(show(first(args)))
			if found == nil {
				return nil, true, nil
			}
			l := &list{}
			for _, x := range found {
				l.items = append(l.items, x)
			}
			return l, true, nil
		case "github.com/spf13/cobra.Command.AddCommand":
			l := &list{}
			if c := b.cells["\x00subs"]; c != nil {
				l = c.v.(*list)
			}
			l.items = append(l.items, args...)
			b.set("\x00subs", l)
			return nil, true, nil
		case "github.com/spf13/cobra.Command.Execute", "github.com/spf13/cobra.Command.ExecuteContext":
			return nil, true, m.cobra(b, at)
		}
	case *content:
		switch name {
		case "Close":
			return nil, true, nil
		}
	case *opaque:
		switch {
		case name == "Wait" && strings.HasPrefix(b.path, "golang.org/x/sync/errgroup."):
			return nil, true, &exit{stays: true}
		}
	}
	return nil, false, nil
}

// cobra runs the command that the command line names (documentation of cobra
// 1.10, "Create rootCmd").
func (m *machine) cobra(root *object, at spot) error {
	cmd := root
	words := m.argv()[1:]
	for i := 0; i < len(words); i++ {
		w, ok := words[i].(string)
		if !ok {
			return giveUp("the command line")
		}
		subs := cmd.cells["\x00subs"]
		if subs == nil {
			break
		}
		for _, x := range subs.v.(*list).items {
			sub, ok := x.(*object)
			if !ok {
				return giveUp("a command")
			}
			use, _ := sub.get("Use")
			name, _, _ := strings.Cut(show(use), " ")
			if name == w {
				cmd = sub
				break
			}
		}
	}
	for _, f := range m.onStart {
		if _, err := m.call(f, undefined, nil, nil, at); err != nil {
			return err
		}
	}
	for _, name := range []string{"PersistentPreRunE", "PersistentPreRun", "PreRunE", "PreRun", "RunE", "Run"} {
		c := cmd.cells[name]
		if c == nil && strings.HasPrefix(name, "Persistent") {
			c = root.cells[name]
		}
		if c == nil {
			continue
		}
		v, err := m.call(c.v, undefined, []any{cmd, &list{}}, nil, at)
		if err != nil {
			return err
		}
		if o, ok := v.(*object); ok && o.class != nil && o.class.name == "error" {
			return &exit{}
		}
	}
	return nil
}

// goBuiltin calls a function of the language or of its library; done is false
// for any other.
func (m *machine) goBuiltin(f *opaque, args []any, at spot) (v any, done bool, err error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	text := func(i int) string {
		if arg(i) == nil {
			return ""
		}
		return show(arg(i))
	}
	unknownArg := opaqueAmong(args)
	if unknownArg != nil {
		switch {
		case strings.HasPrefix(f.path, "strings."), strings.HasPrefix(f.path, "strconv."), f.path == "fmt.Sprintf", f.path == "fmt.Sprint", f.path == "net.JoinHostPort", f.path == "net.SplitHostPort", f.path == "net/url.Parse", f.path == "cmp.Or", goNumbers[f.path]:
			return dontKnow("what is made of " + unknownArg.String()), true, nil
		}
	}
	join := func(l any) ([]string, error) {
		if l == nil {
			return nil, nil
		}
		items, err := m.items(l, m.topOf(at))
		var out []string
		for _, x := range items {
			if !known(x) {
				return nil, undecided("a list that is not known")
			}
			out = append(out, show(x))
		}
		return out, err
	}
	texts := func(list1 []string) any {
		l := &list{}
		for _, x := range list1[:min(len(list1), maxItems)] {
			l.items = append(l.items, x)
		}
		return l
	}
	if kind, ok := goFlagKind(f.path); ok && len(args) >= 3 {
		if name, ok := arg(0).(string); ok {
			short, def := "", arg(1)
			if rest, ok := strings.CutSuffix(kind, "P"); ok {
				kind, short, def = rest, text(1), arg(2)
			}
			return m.goFlag(name, short, kind, def)
		}
	}
	if goNumbers[f.path] && len(args) == 1 {
		n, ok := toNumber(arg(0))
		if ok && strings.HasPrefix(f.path, "float") {
			return n, true, nil
		}
		return integer(n), ok, nil
	}
	switch f.path {
	case "github.com/spf13/cobra.OnInitialize":
		m.onStart = append(m.onStart, args...)
		return nil, true, nil
	case "string":
		if i, ok := arg(0).(integer); ok {
			return string(rune(i)), true, nil
		}
		if c, ok := arg(0).(*content); ok {
			return c.text, true, nil
		}
		return arg(0), true, nil
	case "recover", "close", "print", "println", "fmt.Println", "fmt.Printf", "fmt.Print", "fmt.Fprintln", "fmt.Fprintf", "fmt.Fprint", "log.Println", "log.Printf", "log.Print", "log.SetFlags", "log.SetPrefix", "os/signal.Notify", "time.Sleep", "github.com/spf13/pflag.Parse", "log/slog.Info", "log/slog.Debug", "log/slog.Warn", "log/slog.Error":
		return nil, true, nil
	case "os.Exit", "log.Fatal", "log.Fatalf", "log.Fatalln", "log.Panic", "log.Panicf", "log.Panicln", "runtime.Goexit":
		return nil, true, &exit{}
	case "os.Getenv":
		v, _ := m.lookup(text(0), at)
		return v, unknownArg == nil, nil
	case "os.LookupEnv", "syscall.Getenv":
		v, ok := m.lookup(text(0), at)
		return results(v, ok), unknownArg == nil, nil
	case "os.Setenv":
		if !known(arg(1)) {
			return nil, true, giveUp("what a variable is set to")
		}
		m.env.put(text(0), text(1))
		return nil, true, nil
	case "os.Unsetenv":
		m.env.drop(text(0))
		return nil, true, nil
	case "os.Environ":
		l := &list{}
		for _, k := range m.envKeys() {
			l.items = append(l.items, k+"="+m.env.text(k))
		}
		return l, true, nil
	case "os.ExpandEnv":
		if unknownArg == nil {
			return expand(text(0), func(k string) string { v, _ := m.lookup(k, at); return v }), true, nil
		}
	case "io.ReadAll", "io/ioutil.ReadAll":
		return results(arg(0), nil), true, nil
	case "bytes.NewReader", "strings.NewReader", "bufio.NewReader", "bytes.NewBuffer", "bytes.NewBufferString", "context.Background", "strings.Clone", "bytes.TrimSpace":
		if f.path != "context.Background" {
			return arg(0), true, nil
		}
	case "bufio.NewScanner":
		from := arg(0)
		if t, ok := from.(string); ok {
			from = &content{text: t}
		}
		if c, ok := from.(*content); ok {
			lines, _ := m.items(c, m.topOf(at))
			o := newObject()
			o.class = &class{name: "bufio.Scanner", builtin: true, statics: newObject(), methods: newObject()}
			o.set("rest", &list{items: lines})
			return o, true, nil
		}
	case "strconv.Itoa":
		return text(0), true, nil
	case "strconv.FormatInt", "strconv.FormatUint":
		base, isNumber := args[min(1, len(args)-1)].(integer)
		n, isWhole := args[0].(integer)
		switch {
		case isNumber && base == 10:
			return text(0), true, nil
		case isNumber && isWhole && base >= 2 && base <= 36:
			return strconv.FormatInt(int64(n), int(base)), true, nil
		}
		return dontKnow("a number as text"), true, nil
	case "strconv.Quote":
		return strconv.Quote(text(0)), true, nil
	case "strings.TrimSpace":
		return strings.TrimSpace(text(0)), true, nil
	case "strings.Trim":
		return strings.Trim(text(0), text(1)), true, nil
	case "strings.TrimLeft":
		return strings.TrimLeft(text(0), text(1)), true, nil
	case "strings.TrimRight":
		return strings.TrimRight(text(0), text(1)), true, nil
	case "strings.TrimPrefix":
		return strings.TrimPrefix(text(0), text(1)), true, nil
	case "strings.TrimSuffix":
		return strings.TrimSuffix(text(0), text(1)), true, nil
	case "strings.ToLower":
		return strings.ToLower(text(0)), true, nil
	case "strings.ToUpper":
		return strings.ToUpper(text(0)), true, nil
	case "strings.HasPrefix":
		return strings.HasPrefix(text(0), text(1)), true, nil
	case "strings.HasSuffix":
		return strings.HasSuffix(text(0), text(1)), true, nil
	case "strings.Contains":
		return strings.Contains(text(0), text(1)), true, nil
	case "strings.EqualFold":
		return strings.EqualFold(text(0), text(1)), true, nil
	case "strings.Index":
		return integer(strings.Index(text(0), text(1))), true, nil
	case "strings.LastIndex":
		return integer(strings.LastIndex(text(0), text(1))), true, nil
	case "strings.Count":
		return integer(strings.Count(text(0), text(1))), true, nil
	case "strings.ReplaceAll":
		return strings.ReplaceAll(text(0), text(1), text(2)), true, nil
	case "strings.Replace":
		n, _ := toNumber(arg(3))
		return strings.Replace(text(0), text(1), text(2), int(n)), true, nil
	case "strings.Split":
		return texts(strings.Split(text(0), text(1))), true, nil
	case "strings.SplitN":
		n, _ := toNumber(arg(2))
		return texts(strings.SplitN(text(0), text(1), int(n))), true, nil
	case "strings.Fields":
		return texts(strings.Fields(text(0))), true, nil
	case "strings.Join":
		parts, err := join(arg(0))
		return strings.Join(parts, text(1)), true, err
	case "strings.Cut":
		a, b, ok := strings.Cut(text(0), text(1))
		return results(a, b, ok), true, nil
	case "strings.CutPrefix":
		a, ok := strings.CutPrefix(text(0), text(1))
		return results(a, ok), true, nil
	case "strings.CutSuffix":
		a, ok := strings.CutSuffix(text(0), text(1))
		return results(a, ok), true, nil
	case "net.JoinHostPort":
		if strings.Contains(text(0), ":") {
			return "[" + text(0) + "]:" + text(1), true, nil
		}
		return text(0) + ":" + text(1), true, nil
	case "net.SplitHostPort":
		i := strings.LastIndexByte(text(0), ':')
		if i < 0 {
			return results("", "", goAddrError("missing port in address")), true, nil
		}
		return results(strings.Trim(text(0)[:i], "[]"), text(0)[i+1:], nil), true, nil
	case "net/url.Parse", "net/url.ParseRequestURI":
		u, done, err := m.made(&opaque{path: "URL"}, []any{text(0)}, at)
		if err != nil || !done || !strings.Contains(text(0), "://") {
			return dontKnow("an address"), true, nil
		}
		from, ok := u.(*object)
		if !ok {
			return u, true, nil
		}
		o := newObject()
		o.class = &class{name: "url", builtin: true, statics: newObject(), methods: newObject()}
		host, _ := from.get("hostname")
		href, _ := from.get("href")
		rest := strings.SplitN(strings.SplitN(text(0), "://", 2)[1], "/", 2)[0]
		port := ""
		if i := strings.LastIndexByte(rest, ':'); i >= 0 && !strings.HasSuffix(rest, "]") {
			port = rest[i+1:]
		}
		o.set("Hostname", strings.Trim(show(host), "[]"))
		o.set("Port", port)
		o.set("Host", rest)
		o.set("String", href)
		scheme, _, _ := strings.Cut(text(0), ":")
		o.set("Scheme", scheme)
		return results(o, nil), true, nil
	case "path/filepath.Join", "path.Join":
		parts, err := join(&list{items: args})
		return path.Join(parts...), true, err
	case "regexp.MustCompile", "regexp.Compile":
		re, err := regexp.Compile(text(0))
		if err != nil || len(text(0)) > 300 {
			return nil, true, giveUp("a regular expression")
		}
		o := newObject()
		o.class = &class{name: "regexp", builtin: true, statics: newObject(), methods: newObject()}
		o.cells["re"] = &cell{v: re}
		if f.path == "regexp.Compile" {
			return results(o, nil), true, nil
		}
		return o, true, nil
	}
	return nil, false, nil
}

// goFlagKind is what kind of a flag a call defines (packages flag and pflag).
func goFlagKind(p string) (kind string, ok bool) {
	i := strings.LastIndexByte(p, '.')
	if i < 0 {
		return "", false
	}
	switch of := p[:i]; {
	case of == "github.com/spf13/pflag", of == "github.com/spf13/pflag.NewFlagSet()", strings.HasSuffix(of, ".Flags()"), strings.HasSuffix(of, ".PersistentFlags()"):
	default:
		return "", false
	}
	switch kind = p[i+1:]; strings.TrimSuffix(kind, "P") {
	case "String", "Int", "Int64", "Int32", "Uint", "Uint64", "Uint32", "Uint16", "Uint8", "Int16", "Int8", "Bool":
		return kind, true
	}
	return "", false
}

// goFlag is what the command line gives for a flag, or its default.
func (m *machine) goFlag(name, short, kind string, def any) (any, bool, error) {
	words := m.argv()[1:]
	for i, w := range slices.Backward(words) { // the last counts
		s, ok := w.(string)
		if !ok {
			continue
		}
		word, v, has := strings.Cut(s, "=")
		dashes := strings.TrimPrefix(strings.TrimPrefix(word, "-"), "-")
		if word == dashes || dashes != name && (short == "" || word != "-"+short) {
			continue
		}
		if kind == "Bool" {
			b, err := strconv.ParseBool(v)
			return !has || err == nil && b, true, nil
		}
		if !has {
			if i+1 == len(words) {
				return nil, true, &exit{}
			}
			if v, ok = words[i+1].(string); !ok {
				return dontKnow("an argument"), true, nil
			}
		}
		if kind == "String" {
			return v, true, nil
		}
		n, err := strconv.ParseInt(v, 0, 64)
		if err != nil {
			return nil, true, &exit{}
		}
		return integer(n), true, nil
	}
	return def, true, nil
}

// goNumbers are the types of numbers, which convert.
var goNumbers = map[string]bool{"int": true, "int8": true, "int16": true, "int32": true, "int64": true, "uint": true, "uint8": true, "uint16": true, "uint32": true, "uint64": true, "byte": true, "rune": true, "float64": true, "float32": true, "time.Duration": true}

// expand puts variables into a text, $NAME and ${NAME}, as os.Expand does: the
// core does not import os.
func expand(s string, get func(string) string) string {
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] != '$' || i+1 == len(s) {
			b.WriteByte(s[i])
			continue
		}
		rest, end := s[i+1:], 0
		if rest[0] == '{' {
			end = strings.IndexByte(rest, '}')
			if end < 0 {
				b.WriteByte(s[i])
				continue
			}
			b.WriteString(get(rest[1:end]))
			i += end + 1
			continue
		}
		for end < len(rest) && (rest[end] == '_' || rest[end] >= '0' && rest[end] <= '9' || rest[end] >= 'A' && rest[end] <= 'Z' || rest[end] >= 'a' && rest[end] <= 'z') {
			end++
		}
		b.WriteString(get(rest[:end]))
		i += end
	}
	return b.String()
}
