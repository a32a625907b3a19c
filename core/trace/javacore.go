package trace

import (
	"cmp"
	"maps"
	"math"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"ubique/core/code"
	"ubique/core/source"
)

// What the class library of Java does with texts, numbers, collections, streams,
// files of the tree and the environment (documentation of Java SE 25: packages
// java.lang, java.util, java.util.stream, java.nio.file, java.net; read 2026-11).

// jvKey is a key of a map as a text.
func jvKey(v any) (string, bool) {
	switch v := v.(type) {
	case string:
		return v, true
	case integer:
		return numberKey + show(v), true
	case character:
		return "\x04" + string(rune(v)), true
	case nil:
		return "\x04null", true
	case bool:
		return "\x04" + show(v), true
	case *object:
		if n, ok := v.get("\x00name"); ok {
			return "\x04" + show(n), true
		}
	}
	return "", false
}

// jvPut puts something into a map.
func jvPut(o *object, k, v any) bool {
	key, ok := jvKey(k)
	if !ok {
		return false
	}
	kept, _ := o.other.(map[string]any)
	if kept == nil {
		kept = map[string]any{}
		o.other = kept
	}
	kept[key] = k
	o.set(key, v)
	if o.holds == "sorted" {
		slices.SortStableFunc(o.keys, func(a, b string) int {
			x, y := kept[a], kept[b]
			if n, ok := x.(integer); ok {
				if k, ok := y.(integer); ok {
					return cmp.Compare(n, k)
				}
			}
			return strings.Compare(jvShow(x), jvShow(y))
		})
	}
	return true
}

func jvKeyOf(o *object, key string) any {
	if kept, ok := o.other.(map[string]any); ok {
		if k, ok := kept[key]; ok {
			return k
		}
	}
	return key
}

func jvBuiltin(name string) *object {
	o := newObject()
	o.class = &class{name: name, builtin: true, statics: newObject(), methods: newObject()}
	return o
}

func jvMap() *object {
	o := jvBuiltin("Map")
	o.dict = true
	return o
}

// jvDuration is a length of time, in milliseconds.
func jvDuration(ms integer) *object {
	o := jvBuiltin("Duration")
	o.set("ms", ms)
	return o
}

func jvOptional(v any) *object {
	o := jvBuiltin("Optional")
	o.set("value", v)
	return o
}

func jvEntry(k, v any) *object {
	o := jvBuiltin("Entry")
	o.set("key", k)
	o.set("value", v)
	return o
}

// jvItems lists what is gone through.
func (m *machine) jvItems(v any) ([]any, error) {
	switch v := v.(type) {
	case *list:
		return v.items, nil
	case *opaque:
		return nil, undecided("all of %s", v.String())
	case nil:
		return nil, raise("NullPointerException", "nothing to go through")
	}
	return nil, undecided("all of what is not known")
}

// jvFile1 is what a file of the tree holds, an error of Java where there is none.
func (m *machine) jvFile1(p any, missing string) (any, error) {
	v := m.readFile(p)
	if t, ok := v.(*thrown); ok {
		return nil, raise(missing, t.String())
	}
	return v, nil
}

// order puts the items of a TreeSet in their order (Java SE 21, TreeSet).
func (l *list) order() {
	if !l.sorted {
		return
	}
	texts, numbers := true, true
	for _, x := range l.items {
		_, t := x.(string)
		_, n := x.(integer)
		texts, numbers = texts && t, numbers && n
	}
	switch {
	case texts:
		slices.SortFunc(l.items, func(a, b any) int { return strings.Compare(a.(string), b.(string)) })
	case numbers:
		slices.SortFunc(l.items, func(a, b any) int { return int(a.(integer) - b.(integer)) })
	}
}

// jvBoxed reports whether the argument of a call is an object that holds a number, and no
// number: list.remove(Integer.valueOf(2)).
func jvBoxed(call *code.Node) bool {
	args := call.Args()
	return call.Is(code.Call) && len(args) == 1 && args[0].Is(code.Call) && strings.HasSuffix(args[0].Kid(0).Dotted(), ".valueOf")
}

// jvResource is what a resource on the class path holds; null where it is not
// found.
func (m *machine) jvResource(name string, s *scope) any {
	rel := strings.TrimPrefix(name, "/")
	folders := []string{path.Join(m.e.Dir, "src/main/resources"), path.Join(m.e.Dir, "resources"), path.Join(m.e.Dir, "src/resources"), path.Join(m.e.Dir, "src"), path.Join(m.e.Dir, "conf"), m.e.Dir, source.Dir(s.module.file.Name)}
	for _, d := range folders {
		p := path.Join(d, rel)
		if m.has(p) {
			return m.readFile(root + "/" + p)
		}
	}
	return dontKnow("the resource " + name)
}

// jvLoad puts what a file of properties holds into them.
// jvProperties are the keys and values of a text of properties (Java SE 21,
// java.util.Properties, load).
func jvProperties(text string) (list [][2]string) {
	lines := strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == '\r' })
	for i := 0; i < len(lines); i++ {
		line := strings.TrimLeft(lines[i], " \t\f")
		if line == "" || line[0] == '#' || line[0] == '!' {
			continue
		}
		for strings.HasSuffix(line, "\\") && i+1 < len(lines) {
			i++
			line = line[:len(line)-1] + strings.TrimLeft(lines[i], " \t\f")
		}
		end := strings.IndexAny(line, "=: \t\f")
		if end < 0 {
			list = append(list, [2]string{line, ""})
			continue
		}
		rest := strings.TrimLeft(line[end:], " \t\f")
		if rest != "" && (rest[0] == '=' || rest[0] == ':') {
			rest = strings.TrimLeft(rest[1:], " \t\f")
		}
		list = append(list, [2]string{line[:end], rest})
	}
	return list
}

func (m *machine) jvLoad(o *object, from any) error {
	c, ok := from.(*content)
	if !ok {
		if from == nil {
			return raise("NullPointerException", "nothing to load from")
		}
		return undecided("properties that are not known")
	}
	if c.data == nil {
		for _, p := range jvProperties(c.text) {
			jvPut(o, p[0], p[1])
		}
		return nil
	}
	v, err := m.fromValue(c.data, 0)
	d, isObject := v.(*object)
	if c.data == nil || err != nil || !isObject {
		return undecided("properties that are not known")
	}
	var add func(prefix string, d *object)
	add = func(prefix string, d *object) {
		for _, k := range d.keys {
			if in, ok := d.cells[k].v.(*object); ok {
				add(prefix+k+".", in)
				continue
			}
			jvPut(o, prefix+k, jvShow(m.fitted(d.cells[k].v)))
		}
	}
	add("", d)
	return nil
}

// jvNewOf makes an object of a class of the library; done is false for any that
// is not followed.
func (m *machine) jvNewOf(c *opaque, args []any, s *scope, at spot) (any, bool, error) {
	name := c.path[strings.LastIndexByte(c.path, '.')+1:]
	switch name {
	case "ProcessBuilder":
		return m.jvProcessBuilder(args), true, nil
	case "CommandLine":
		if on, ok := first(args).(*object); ok && strings.HasPrefix(c.path, "picocli.") && on.class != nil && on.class.node != nil {
			return m.jvPicocli(on), true, nil
		}
	case "ObjectMapper", "JsonMapper", "YAMLMapper", "TomlMapper", "Gson", "Yaml":
		kind := name
		switch {
		case strings.HasSuffix(name, "Mapper") && strings.HasPrefix(c.path, "com.fasterxml.jackson."):
			kind = "ObjectMapper"
		case name == "Gson" && strings.HasPrefix(c.path, "com.google.gson."), name == "Yaml" && strings.HasPrefix(c.path, "org.yaml.snakeyaml."):
		default:
			return nil, false, nil
		}
		return m.jvReader(kind, s), true, nil
	case "JSONObject":
		if v, ok, err := m.jvData(first(args)); strings.HasPrefix(c.path, "org.json.") && (ok || err != nil) {
			return m.jvTree("JSONObject", v, true), true, err
		}
	case "JCommander":
		o := m.jvCommander(args[:min(1, len(args))])
		if len(args) > 1 {
			if _, err := o.class.methods.cells["parse"].v.(*function).native(m, o, args[1:], nil, at); err != nil {
				return nil, true, err
			}
		}
		return o, true, nil
	case "ArrayList", "LinkedList", "ArrayDeque", "Vector", "CopyOnWriteArrayList", "HashSet", "LinkedHashSet", "TreeSet", "Stack", "PriorityQueue", "ConcurrentLinkedQueue":
		l := &list{set: strings.HasSuffix(name, "Set"), sorted: name == "TreeSet" && len(args) < 2}
		defer l.order()
		if x, ok := first(args).(*list); ok {
			if l.set && len(x.items) > 1 && unclear(x.items, 0) != nil {
				return dontKnow("a set of what is not known"), true, nil
			}
			l.items = slices.Clone(x.items)
		} else if len(args) > 0 && !known(args[0]) {
			return dontKnow("a list of what is not known"), true, nil
		}
		return l, true, nil
	case "HashMap", "LinkedHashMap", "TreeMap", "ConcurrentHashMap", "Hashtable", "EnumMap", "Properties":
		o := jvMap()
		if name == "Properties" {
			o.class.name = name
		}
		if _, by := first(args).(*function); name == "TreeMap" && !by {
			o.holds = "sorted"
		} else if by {
			return nil, true, giveUp("a map with an order of its own")
		}
		switch x := first(args).(type) {
		case *object:
			if name == "Properties" { // its defaults
				o.holds = "defaults"
			}
			for _, k := range x.keys {
				jvPut(o, jvKeyOf(x, k), x.cells[k].v)
			}
		case *envMap:
			for _, k := range m.envKeys() {
				jvPut(o, k, m.env.text(k))
			}
		}
		return o, true, nil
	case "StringBuilder", "StringBuffer":
		o := jvBuiltin("StringBuilder")
		o.set("text", "")
		if t, ok := first(args).(string); ok {
			o.set("text", t)
		}
		return o, true, nil
	case "StringJoiner":
		o := jvBuiltin("StringJoiner")
		o.set("sep", jvShow(first(args)))
		o.set("parts", &list{})
		o.set("before", "")
		o.set("after", "")
		if len(args) == 3 {
			o.set("before", jvShow(args[1]))
			o.set("after", jvShow(args[2]))
		}
		return o, true, nil
	case "String":
		if len(args) == 0 {
			return "", true, nil
		}
		switch x := args[0].(type) {
		case string:
			return x, true, nil
		case *content:
			return x, true, nil
		case *list:
			var b strings.Builder
			for _, r := range x.items {
				b.WriteString(jvShow(r))
			}
			return b.String(), true, nil
		}
	case "AtomicInteger", "AtomicLong", "AtomicReference", "AtomicBoolean":
		o := jvBuiltin("Atomic")
		v := first(args)
		if len(args) == 0 {
			v = map[string]any{"AtomicInteger": integer(0), "AtomicLong": integer(0), "AtomicBoolean": false}[name]
		}
		o.set("value", v)
		return o, true, nil
	case "File":
		p := jvShow(first(args))
		if len(args) > 1 {
			p = path.Join(jvPath(args[0]), jvShow(args[1]))
		}
		return pyPath(p), true, nil
	case "StringReader":
		if t, ok := first(args).(string); ok {
			return &content{text: t}, true, nil
		}
		return nil, false, nil
	case "FileInputStream", "FileReader", "BufferedReader", "InputStreamReader", "BufferedInputStream", "Scanner":
		if len(args) == 0 {
			return nil, false, nil
		}
		if name == "Scanner" {
			from := args[0]
			if p, ok := from.(pyPath); ok {
				v, err := m.jvFile1(p, "NoSuchFileException")
				if err != nil {
					return nil, true, err
				}
				from = v
			}
			text := ""
			switch x := from.(type) {
			case *content:
				text = x.text
			case string:
				text = x
			default:
				return dontKnow("what is read"), true, nil
			}
			o := jvBuiltin("Scanner")
			l := &list{}
			for t := range strings.SplitAfterSeq(text, "\n") {
				if t != "" {
					l.items = append(l.items, strings.TrimRight(t, "\r\n"))
				}
			}
			o.set("lines", l)
			return o, true, m.use(len(text))
		}
		if c, ok := args[0].(*content); ok {
			return c, true, nil
		}
		if !known(args[0]) {
			return dontKnow("a file: " + args[0].(*opaque).String()), true, nil
		}
		v, err := m.jvFile1(pyPath(jvPath(args[0])), "FileNotFoundException")
		return v, true, err
	case "Thread":
		o := jvBuiltin("Thread")
		o.set("run", first(args))
		return o, true, nil
	case "SimpleEntry", "SimpleImmutableEntry":
		if len(args) == 2 {
			return jvEntry(args[0], args[1]), true, nil
		}
	case "Integer", "Long":
		return m.jvStatic(m.package1("Integer"), "valueOf", args, s, at)
	case "Object":
		return jvBuiltin("Object"), true, nil
	case "CountDownLatch", "Semaphore", "ReentrantLock":
		return &opaque{path: name + "()"}, true, nil
	case "URI", "URL":
		return m.jvURI(jvShow(first(args)))
	}
	if jvErrors[name] != "" {
		msg := any(nil)
		if len(args) > 0 {
			switch x := args[0].(type) {
			case string:
				msg = x
			case *object:
				msg = jvShow(x)
			}
		}
		o := madeError(name, "")
		o.set("message", msg)
		return o, true, nil
	}
	return nil, false, nil
}

func (m *machine) jvURI(text string) (any, bool, error) {
	v, _, err := m.made(&opaque{path: "URL"}, []any{text}, spot{})
	x, ok := v.(*object)
	if err != nil || !ok {
		return nil, true, raise("IllegalArgumentException", "not an address")
	}
	o := jvBuiltin("URI")
	host, _ := x.get("hostname")
	port, _ := x.get("port")
	proto, _ := x.get("protocol")
	p, _ := x.get("pathname")
	o.set("host", host)
	o.set("scheme", strings.TrimSuffix(show(proto), ":"))
	o.set("path", p)
	query, _ := x.get("search")
	o.set("query", strings.TrimPrefix(show(query), "?"))
	o.set("port", integer(-1))
	if i := strings.LastIndexByte(text, ':'); i >= 0 {
		if n, ok := atoi(strings.SplitN(text[i+1:], "/", 2)[0]); ok {
			o.set("port", integer(n))
		}
	}
	_ = port
	return o, true, nil
}

func jvPath(v any) string {
	switch v := v.(type) {
	case pyPath:
		return string(v)
	case string:
		return v
	}
	return "/"
}

// jvParse reads a whole number as Integer.parseInt does.
func jvParse(v any, base int) (any, error) {
	t, ok := v.(string)
	if !ok {
		if v == nil {
			return nil, raise("NumberFormatException", "Cannot parse null string")
		}
		if o, isOpaque := v.(*opaque); isOpaque {
			return dontKnow("what is made of " + o.String()), nil
		}
		return v, nil
	}
	if strings.Contains(t, "_") {
		return nil, raise("NumberFormatException", t)
	}
	i, err := strconv.ParseInt(t, base, 64)
	if err != nil || i > math.MaxInt32 || i < math.MinInt32 {
		return nil, raise("NumberFormatException", "For input string: "+strconv.Quote(t))
	}
	return integer(i), nil
}

// jvNeeding are functions of Java that must be given what they are for, jvAllNeeding those
// that need every argument (Java SE 25, packages java.lang, java.net, java.nio.file and
// java.util).
var (
	jvNeeding    = words("URI.create Path.of Paths.get Files.readString Files.exists Files.readAllLines Pattern.compile Duration.parse")
	jvAllNeeding = words("List.of Map.of Set.of System.setProperty Map.entry")
)

// jvStatic calls a function of a class of the library, or a method of something
// that is not followed; done is false for any other.
func (m *machine) jvStatic(o *opaque, name string, args []any, s *scope, at spot) (any, bool, error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	text := func(i int) string { return jvShow(arg(i)) }
	call := o.path + "." + name
	if (jvNeeding[call] || jvAllNeeding[call]) && len(args) > 0 && (args[0] == nil || jvAllNeeding[call] && slices.Contains(args, nil)) {
		return nil, true, raise("NullPointerException", call+" is given null")
	}
	if x := opaqueAmong(args); x != nil {
		switch o.path {
		case "Integer", "Long", "Boolean", "Double", "Math", "Path", "Paths", "Character", "Short":
			return dontKnow("what is made of " + x.String()), true, nil
		}
	}
	switch call {
	case "System.getenv":
		if len(args) == 0 {
			return &envMap{}, true, nil
		}
		if !known(args[0]) {
			return nil, true, undecided("a variable whose name is not known")
		}
		if v, ok := m.lookup(text(0), at); ok {
			return v, true, nil
		}
		return nil, true, nil
	case "System.getProperty", "Integer.getInteger", "Boolean.getBoolean", "Long.getLong":
		v, set := m.jvSystem()[text(0)]
		switch {
		case set:
			if _, ok := v.(*opaque); ok {
				return v, true, nil
			}
		case strings.HasPrefix(text(0), "java.") || strings.HasPrefix(text(0), "os.") || strings.HasPrefix(text(0), "user."):
			return dontKnow("a property of the machine"), true, nil
		}
		switch name {
		case "getBoolean":
			return v != nil && strings.EqualFold(show(v), "true"), true, nil
		case "getInteger", "getLong":
			if v != nil {
				if n, err := strconv.ParseInt(pyShow(v), 0, 64); err == nil && !strings.ContainsAny(pyShow(v), "_oObB") { // as Integer.decode reads it
					return integer(n), true, nil
				}
			}
			return arg(1), true, nil
		}
		if v == nil {
			v = arg(1)
		}
		return v, true, nil
	case "System.getProperties":
		o := jvMap()
		o.class.name = "Properties"
		all := m.jvSystem()
		for _, k := range slices.Sorted(maps.Keys(all)) {
			jvPut(o, k, all[k])
		}
		return o, true, nil
	case "System.setProperty", "System.clearProperty":
		key, ok := arg(0).(string)
		if !ok {
			return nil, true, giveUp("which property of the machine is set")
		}
		all := m.jvSystem()
		had := all[key]
		if delete(all, key); name == "setProperty" {
			all[key] = arg(1)
		}
		return had, true, nil
	case "System.gc", "System.loadLibrary":
		return nil, true, nil
	case "System.exit", "Runtime.getRuntime().exit", "Runtime.getRuntime().halt":
		if r, ok := arg(0).(*opaque); ok && m.waiting && r.recv != nil { // a library runs what it was given first
			return nil, true, giveUp("what %s runs", r)
		}
		return nil, true, &exit{}
	case "com.google.gson.JsonParser.parseReader", "com.google.gson.JsonParser.parseString":
		if v, ok, err := m.jvData(arg(0)); ok || err != nil {
			return m.jvTree("JsonObject", v, true), true, err
		}
	case "com.typesafe.config.ConfigFactory.load", "com.typesafe.config.ConfigFactory.parseResources":
		file := "application.conf"
		if t, ok := arg(0).(string); ok {
			if file = t; path.Ext(t) == "" {
				file += ".conf"
			}
		}
		if v, ok, err := m.jvConfig(file, s); ok || err != nil {
			return v, true, err
		}
	case "com.beust.jcommander.JCommander.newBuilder":
		return m.jvCommander(nil), true, nil
	case "URI.create":
		if t, ok := arg(0).(string); ok {
			return m.jvURI(t)
		}
		return dontKnow("an address"), true, nil
	case "System.lineSeparator":
		return "\n", true, nil
	case "System.currentTimeMillis", "System.nanoTime":
		return dontKnow("the time"), true, nil
	case "Integer.parseInt", "Long.parseLong", "Short.parseShort", "Integer.valueOf", "Long.valueOf", "Integer.parseUnsignedInt", "Byte.parseByte", "Short.valueOf":
		base := 10
		if b, ok := arg(1).(integer); ok {
			base = int(b)
		}
		if c, ok := arg(0).(character); ok {
			return integer(c), true, nil
		}
		v, err := jvParse(arg(0), base)
		return v, true, err
	case "Integer.decode":
		t := text(0)
		i, err := strconv.ParseInt(strings.Replace(t, "#", "0x", 1), 0, 32)
		if err != nil {
			return nil, true, raise("NumberFormatException", t)
		}
		return integer(i), true, nil
	case "Integer.toString", "Long.toString", "String.valueOf", "Integer.toHexString", "Integer.toBinaryString", "Integer.toOctalString", "Boolean.toString", "Character.toString", "Objects.toString", "String.copyValueOf":
		switch {
		case name == "toHexString" || name == "toBinaryString" || name == "toOctalString" || len(args) > 1 && (call == "Integer.toString" || call == "Long.toString"):
			i, ok := arg(0).(integer)
			base, isBase := map[string]integer{"toHexString": 16, "toBinaryString": 2, "toOctalString": 8}[name]
			if !isBase {
				base, isBase = arg(1).(integer)
			}
			if !ok || !isBase || base < 2 || base > 36 || i < 0 && name != "toString" {
				return dontKnow("a number as text"), true, nil
			}
			return strconv.FormatInt(int64(i), int(base)), true, nil
		case call == "Objects.toString" && arg(0) == nil && len(args) > 1:
			return args[1], true, nil
		}
		v, err := m.jvText(arg(0), s, at)
		return v, true, err
	case "Arrays.sort":
		l, ok := arg(0).(*list)
		if !ok || len(args) > 2 {
			return nil, true, giveUp("what is sorted")
		}
		_, _, err := m.jvList(l, "sort", []any{arg(1)}, s, at)
		return nil, true, err
	case "Arrays.toString":
		if l, ok := arg(0).(*list); ok {
			t, err := m.jvJoin(l.items, ", ", s, at)
			if t, isText := t.(string); isText && err == nil {
				return "[" + t + "]", true, nil
			}
			return dontKnow("a list as text"), true, err
		}
	case "Duration.ofSeconds", "Duration.ofMinutes", "Duration.ofHours", "Duration.ofMillis", "Duration.ofDays":
		if n, ok := arg(0).(integer); ok && len(args) == 1 {
			return jvDuration(n * map[string]integer{"ofMillis": 1, "ofSeconds": 1000, "ofMinutes": 60_000, "ofHours": 3_600_000, "ofDays": 86_400_000}[name]), true, nil
		}
		return dontKnow(name), true, nil
	case "Duration.parse":
		if d, err := time.ParseDuration(strings.ToLower(strings.TrimPrefix(strings.ToUpper(text(0)), "PT"))); err == nil && strings.HasPrefix(strings.ToUpper(text(0)), "PT") {
			return jvDuration(integer(d.Milliseconds())), true, nil
		}
		return dontKnow(name), true, nil
	case "Arrays.fill":
		l, ok := arg(0).(*list)
		if !ok || len(args) != 2 {
			return nil, true, giveUp("what is filled")
		}
		for i := range l.items {
			l.items[i] = arg(1)
		}
		return nil, true, nil
	case "Integer.compare", "Long.compare":
		a, _ := toNumber(arg(0))
		b, _ := toNumber(arg(1))
		return integer(compare(a, b)), true, nil
	case "Integer.sum", "Math.addExact":
		v, err := m.jvOperate("+", arg(0), arg(1), s, at)
		return v, true, err
	case "Integer.max", "Math.max", "Integer.min", "Math.min", "Long.max", "Long.min":
		a, _ := toNumber(arg(0))
		b, _ := toNumber(arg(1))
		if (a > b) == (name == "max") {
			return args[0], true, nil
		}
		return args[1], true, nil
	case "Math.clamp":
		v, lo, hi := arg(0), arg(1), arg(2)
		x, _ := toNumber(v)
		l, _ := toNumber(lo)
		h, _ := toNumber(hi)
		switch {
		case x < l:
			return lo, true, nil
		case x > h:
			return hi, true, nil
		}
		return v, true, nil
	case "Math.abs":
		if i, ok := arg(0).(integer); ok {
			return max(i, -i), true, nil
		}
	case "Math.floorMod":
		v, err := pyOperate("%", arg(0), arg(1))
		return v, true, err
	case "Math.toIntExact":
		return arg(0), true, nil
	case "Math.floor", "Math.ceil", "Math.round", "Math.pow", "Math.sqrt":
		a, _ := toNumber(arg(0))
		b, _ := toNumber(arg(1))
		switch name {
		case "floor":
			return math.Floor(a), true, nil
		case "ceil":
			return math.Ceil(a), true, nil
		case "round":
			return integer(math.Floor(a + 0.5)), true, nil
		case "pow":
			return math.Pow(a, b), true, nil
		}
		return math.Sqrt(a), true, nil
	case "Boolean.parseBoolean", "Boolean.valueOf":
		if b, ok := arg(0).(bool); ok {
			return b, true, nil
		}
		return arg(0) != nil && strings.EqualFold(text(0), "true"), true, nil
	case "Double.parseDouble", "Double.valueOf", "Float.parseFloat":
		t, ok := arg(0).(string)
		f, err := strconv.ParseFloat(strings.TrimSpace(t), 64)
		if !ok || err != nil {
			return nil, true, raise("NumberFormatException", t)
		}
		return f, true, nil
	case "Character.isDigit", "Character.isLetter", "Character.isWhitespace", "Character.isUpperCase", "Character.isLetterOrDigit", "Character.getNumericValue", "Character.toUpperCase", "Character.toLowerCase":
		c, ok := arg(0).(character)
		if i, isInt := arg(0).(integer); isInt {
			c, ok = character(i), true
		}
		if !ok {
			return nil, true, giveUp("a character")
		}
		r := rune(c)
		switch name {
		case "isDigit":
			return unicode.IsDigit(r), true, nil
		case "isLetter":
			return unicode.IsLetter(r), true, nil
		case "isWhitespace":
			return unicode.IsSpace(r), true, nil
		case "isUpperCase":
			return unicode.IsUpper(r), true, nil
		case "isLetterOrDigit":
			return unicode.IsLetter(r) || unicode.IsDigit(r), true, nil
		case "getNumericValue":
			if r >= '0' && r <= '9' {
				return integer(r - '0'), true, nil
			}
			return nil, true, giveUp("the value of a character")
		case "toUpperCase":
			return character(unicode.ToUpper(r)), true, nil
		}
		return character(unicode.ToLower(r)), true, nil
	case "Objects.requireNonNull":
		if arg(0) == nil {
			return nil, true, raise("NullPointerException", text(1))
		}
		return arg(0), true, nil
	case "Objects.requireNonNullElse":
		if arg(0) != nil {
			return arg(0), true, nil
		}
		return arg(1), true, nil
	case "Objects.requireNonNullElseGet":
		if arg(0) != nil {
			return arg(0), true, nil
		}
		v, err := m.jvApply(arg(1), nil, s, at)
		return v, true, err
	case "Objects.isNull", "Objects.nonNull":
		if !known(arg(0)) {
			return dontKnow("whether something is there"), true, nil
		}
		return (arg(0) == nil) == (name == "isNull"), true, nil
	case "Objects.equals":
		same, ok := jvEqual(arg(0), arg(1))
		if !ok {
			return dontKnow("whether two things are the same"), true, nil
		}
		return same, true, nil
	case "Optional.of", "Optional.ofNullable", "OptionalInt.of", "Optional.empty", "OptionalInt.empty":
		if name == "of" && arg(0) == nil {
			return nil, true, raise("NullPointerException", "")
		}
		return jvOptional(arg(0)), true, nil
	case "List.of", "Arrays.asList", "Set.of", "Stream.of", "Arrays.stream", "IntStream.of", "List.copyOf", "Set.copyOf", "Stream.empty", "Collections.emptyList", "Collections.emptySet", "Collections.singletonList", "Collections.singleton", "EnumSet.of", "EnumSet.allOf", "Stream.ofNullable", "Arrays.copyOf", "ImmutableList.of", "Arrays.copyOfRange":
		l := &list{set: strings.Contains(o.path, "Set")}
		switch x := arg(0).(type) {
		case *list:
			if len(args) == 1 && name != "singletonList" {
				l.items = slices.Clone(x.items)
				return l, true, nil
			}
			if n, ok := arg(1).(integer); ok && name == "copyOf" && o.path == "Arrays" && n >= 0 && n <= maxItems && len(x.items) > 0 {
				l.items = slices.Clone(x.items[:min(int(n), len(x.items))])
				var zero any
				switch x.items[0].(type) {
				case integer:
					zero = integer(0)
				case bool:
					zero = false
				case float64:
					zero = 0.0
				}
				for len(l.items) < int(n) {
					l.items = append(l.items, zero)
				}
				return l, true, nil
			}
			if name == "copyOfRange" && len(args) == 3 {
				from, ok1 := args[1].(integer)
				to, ok2 := args[2].(integer)
				if !ok1 || !ok2 || from < 0 || int(to) > len(x.items) || from > to {
					return nil, true, giveUp("a part of a list")
				}
				l.items = slices.Clone(x.items[from:to])
				return l, true, nil
			}
		case nil:
			if name == "ofNullable" {
				return l, true, nil
			}
		}
		if name == "allOf" || name == "copyOf" || strings.HasPrefix(name, "copyOf") {
			return nil, true, giveUp("a set of all")
		}
		l.items = slices.Clone(args)
		return l, true, nil
	case "Collections.unmodifiableList", "Collections.unmodifiableMap", "Map.copyOf", "Collections.unmodifiableSet", "Collections.synchronizedMap", "Collections.synchronizedList":
		return arg(0), true, nil
	case "IntStream.range", "IntStream.rangeClosed", "LongStream.range":
		from, ok1 := arg(0).(integer)
		to, ok2 := arg(1).(integer)
		if name == "rangeClosed" {
			to++
		}
		if !ok1 || !ok2 || to-from > maxItems {
			return nil, true, spent("a range that is too long")
		}
		l := &list{}
		for i := from; i < to; i++ {
			l.items = append(l.items, i)
		}
		return l, true, nil
	case "Stream.concat":
		a, err := m.jvItems(arg(0))
		if err != nil {
			return nil, true, err
		}
		b, err := m.jvItems(arg(1))
		return &list{items: append(slices.Clone(a), b...)}, true, err
	case "Map.of", "ImmutableMap.of":
		d := jvMap()
		for i := 0; i+1 < len(args); i += 2 {
			if !jvPut(d, args[i], args[i+1]) {
				return nil, true, undecided("a key that is not known")
			}
		}
		return d, true, nil
	case "Predicate.not", "Predicate.isEqual":
		fn := arg(0)
		return &function{native: func(m *machine, _ any, a []any, _ map[string]any, at spot) (any, error) {
			if name == "isEqual" {
				same, ok := jvEqual(fn, at2(a, 0))
				if !ok {
					return dontKnow("whether two things are the same"), nil
				}
				return same, nil
			}
			v, err := m.jvApply(fn, a, s, at)
			if err != nil {
				return nil, err
			}
			yes, ok := v.(bool)
			if !ok {
				return dontKnow("whether something holds"), nil
			}
			return !yes, nil
		}}, true, nil
	case "Map.entry":
		return jvEntry(arg(0), arg(1)), true, nil
	case "Map.ofEntries":
		d := jvMap()
		for _, a := range args {
			e, ok := a.(*object)
			if !ok {
				return nil, true, undecided("an entry that is not known")
			}
			k, _ := e.get("key")
			v, _ := e.get("value")
			if !jvPut(d, k, v) {
				return nil, true, undecided("a key that is not known")
			}
		}
		return d, true, nil
	case "Collections.emptyMap":
		return jvMap(), true, nil
	case "Collections.sort", "Collections.reverse":
		l, ok := arg(0).(*list)
		if !ok {
			return nil, true, giveUp("a list that is sorted")
		}
		if name == "reverse" {
			slices.Reverse(l.items)
			return nil, true, nil
		}
		v, _, err := m.jvList(l, "sorted", args[1:], s, at)
		if x, ok := v.(*list); ok {
			l.items = x.items
		}
		return nil, true, err
	case "Collections.addAll":
		l, ok := arg(0).(*list)
		if !ok {
			return nil, true, undecided("a list that is not known")
		}
		l.items = append(l.items, args[1:]...)
		return true, true, nil
	case "String.format", "MessageFormat.format":
		if f, ok := arg(0).(string); ok && o.path == "String" {
			rest := args[1:]
			if l, isList := arg(1).(*list); isList && len(args) == 2 {
				rest = l.items
			}
			v, err := m.jvFormat(f, rest, s, at)
			return v, true, err
		}
		return dontKnow("a format"), true, nil
	case "String.join":
		items := args[min(1, len(args)):]
		if l, ok := arg(1).(*list); ok && len(args) == 2 {
			items = l.items
		}
		v, err := m.jvJoin(items, text(0), s, at)
		return v, true, err
	case "Path.of", "Paths.get":
		p := text(0)
		for i := range args[min(1, len(args)):] {
			p = path.Join(p, text(i+1))
		}
		return pyPath(p), true, nil
	case "Files.exists", "Files.isRegularFile", "Files.isReadable", "Files.notExists", "Files.isDirectory":
		there := m.there(jvPath(arg(0)), name != "isDirectory", name != "isRegularFile" && name != "isReadable")
		return there == (name != "notExists"), true, nil
	case "Files.readString", "Files.newInputStream", "Files.newBufferedReader", "Files.readAllBytes", "Files.readAllLines", "Files.lines":
		v, err := m.jvFile1(pyPath(jvPath(arg(0))), "NoSuchFileException")
		if c, ok := v.(*content); ok && (name == "readAllLines" || name == "lines") {
			l := &list{}
			for t := range strings.SplitSeq(strings.TrimSuffix(c.text, "\n"), "\n") {
				l.items = append(l.items, strings.TrimSuffix(t, "\r"))
			}
			return l, true, err
		}
		return v, true, err
	case "InetAddress.getLoopbackAddress":
		return "127.0.0.1", true, nil
	case "InetAddress.getByName":
		if arg(0) == nil {
			return "127.0.0.1", true, nil
		}
		return arg(0), true, nil
	case "Thread.currentThread().join", "Thread.sleep", "Thread.currentThread().setName":
		if name == "join" && len(m.calls) > 0 {
			return nil, true, &exit{stays: true}
		}
		return nil, true, nil
	case "CountDownLatch().await", "Semaphore().acquire":
		if len(m.calls) > 0 {
			return nil, true, &exit{stays: true}
		}
		return nil, true, giveUp("it waits")
	case "Runtime.getRuntime().availableProcessors":
		return integer(2), true, nil
	case "Runtime.getRuntime().exec":
		l := launch{}
		if given, ok := arg(0).(*list); ok {
			l.words = given.items
		} else if t, ok := arg(0).(string); ok {
			for _, w := range strings.Fields(t) {
				l.words = append(l.words, w)
			}
		}
		if len(l.words) == 0 || len(args) > 1 && arg(1) != nil {
			break
		}
		v, err := m.jvProcess(l, at)
		return v, true, err
	case "Runtime.getRuntime().addShutdownHook":
		return nil, true, nil
	case "System.out.println", "System.err.println", "System.out.printf", "System.err.printf", "System.out.print", "System.err.print", "System.out.flush":
		return nil, true, nil
	case "Pattern.compile":
		if t, ok := arg(0).(string); ok && len(args) == 1 {
			re, err := m.compile(t)
			if err != nil {
				return nil, true, giveUp("a regular expression")
			}
			p := jvBuiltin("Pattern")
			p.other = re
			return p, true, nil
		}
		return nil, true, giveUp("a regular expression")
	case "Pattern.matches":
		return m.jvMatches(text(1), text(0))
	case "CompletableFuture.runAsync", "CompletableFuture.supplyAsync":
		v, err := m.jvApply(arg(0), nil, s, at)
		f := jvBuiltin("Future")
		f.set("value", v)
		if x, ok := err.(*exit); ok && x.stays {
			err = nil
		}
		return f, true, err
	case "ResourceBundle.getBundle":
		if t, ok := arg(0).(string); ok && len(args) == 1 {
			if c, ok := m.jvResource(strings.ReplaceAll(t, ".", "/")+".properties", s).(*content); ok {
				o := jvMap()
				o.class.name = "Properties"
				return o, true, m.jvLoad(o, c)
			}
		}
	case "Function.identity", "UnaryOperator.identity":
		return &function{native: func(_ *machine, _ any, a []any, _ map[string]any, _ spot) (any, error) { return first(a), nil }}, true, nil
	case "Comparator.comparing", "Comparator.comparingInt", "Comparator.naturalOrder", "Comparator.reverseOrder", "Collectors.toList", "Collectors.toSet", "Collectors.joining", "Collectors.toMap", "Collectors.toUnmodifiableList", "Collectors.groupingBy", "Collectors.partitioningBy", "Collectors.counting", "Collectors.mapping", "Collectors.filtering", "Collectors.toUnmodifiableMap", "Collectors.toUnmodifiableSet":
		c := jvBuiltin(name)
		c.set("args", &list{items: args})
		return c, true, nil
	case "Stream.iterate", "IntStream.iterate":
		if fn, ok := arg(1).(*function); ok && len(args) == 2 {
			l := &list{}
			for x := arg(0); len(l.items) < 256; {
				l.items = append(l.items, x)
				v, err := m.jvApply(fn, []any{x}, s, at)
				if err != nil {
					return nil, true, err
				}
				x = v
			}
			return l, true, nil
		}
	case "Instant.now", "LocalDate.now", "UUID.randomUUID":
		return dontKnow(name), true, nil
	}
	if strings.HasPrefix(call, "Arrays.") || strings.HasPrefix(call, "Collections.") { // it may change what it is given
		return nil, true, giveUp("what %s does", call)
	}
	// A stream for the resources of the program.
	if name == "getResourceAsStream" || name == "getResource" || name == "getSystemResourceAsStream" {
		if t, ok := arg(0).(string); ok {
			return m.jvResource(t, s), true, nil
		}
	}
	if strings.HasSuffix(o.path, ".class") {
		switch name {
		case "getSimpleName":
			return strings.TrimSuffix(o.path, ".class"), true, nil
		case "getClassLoader", "getModule", "getPackage":
			return &opaque{path: o.path + ".loader"}, true, nil
		}
	}
	// Executors run what they are given.
	if strings.HasPrefix(o.path, "Executors.") && (name == "submit" || name == "execute" || name == "schedule") {
		_, err := m.jvApply(arg(0), nil, s, at)
		if x, ok := err.(*exit); ok && x.stays {
			err = nil
		}
		return &opaque{path: "Executors.future()"}, true, err
	}
	if (o.path == "InetSocketAddress()" || o.path == "InetSocketAddress.createUnresolved()") && len(o.args) > 0 {
		port, host := o.args[len(o.args)-1], any("0.0.0.0")
		if len(o.args) > 1 {
			host = o.args[0]
		}
		switch name {
		case "getPort":
			return port, true, nil
		case "getHostString", "getHostName":
			return host, true, nil
		case "getAddress":
			if len(o.args) == 1 {
				return host, true, nil // the one of every interface
			}
		}
	}
	return nil, false, nil
}

// jvMachine are properties that every virtual machine has (Java SE 21, System,
// getProperties).
var jvMachine = strings.Fields(`file.encoding file.separator java.class.path java.class.version java.home java.io.tmpdir java.library.path
	java.vendor java.vendor.url java.version java.vm.name java.vm.version line.separator native.encoding os.arch os.name os.version path.separator
	user.dir user.home user.name`)

// jvSystem are the properties of the machine as the program has set them so far.
func (m *machine) jvSystem() map[string]any {
	if m.properties != nil {
		return m.properties
	}
	m.properties = map[string]any{}
	for _, k := range jvMachine {
		m.properties[k] = dontKnow("a property of the machine")
	}
	m.properties["user.dir"] = root
	m.properties["file.separator"], m.properties["line.separator"], m.properties["path.separator"] = "/", "\n", ":"
	for k, p := range m.e.Properties {
		if x, err := m.fromValue(p, 0); err != nil {
			m.properties[k] = dontKnow("a property of the machine")
		} else if o, ok := x.(*opaque); ok {
			m.properties[k] = o
		} else {
			m.properties[k] = jvShow(x)
		}
	}
	return m.properties
}

func (m *machine) jvMatches(text, re string) (any, bool, error) {
	r, err := m.compile("^(?:" + re + ")$")
	if err != nil {
		return nil, true, giveUp("a regular expression")
	}
	return r.MatchString(text), true, nil
}

func (m *machine) jvFormat(format string, args []any, s *scope, at spot) (any, error) {
	var failed error
	unknown := false
	out, ok := verbs(strings.ReplaceAll(format, "%n", "\n"), args, func(verb byte, v any) (any, bool) {
		t, err := m.jvText(v, s, at)
		if err != nil {
			failed = err
			return "", false
		}
		text, known := t.(string)
		unknown = unknown || !known
		_, whole := v.(integer)
		f, fraction := v.(float64)
		switch {
		case verb == 's' || verb == 'b' || verb == 'c':
			return text, known
		case whole && (verb == 'd' || verb == 'x' || verb == 'X' || verb == 'o'):
			return v, known
		case fraction && verb == 'f':
			return f, known
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

// jvCollect are the collectors that put what they get into groups, or hand it on
// (Java SE 25, java.util.stream.Collectors).
func (m *machine) jvCollect(name string, b *list, given []any, s *scope, at spot) (any, error) {
	if len(given) == 0 {
		return nil, giveUp("what is collected")
	}
	finish := func(l *list, with any) (any, error) {
		v, done, err := m.jvList(l, "collect", []any{with}, s, at)
		if err == nil && !done {
			err = giveUp("what is collected")
		}
		return v, err
	}
	if name == "mapping" || name == "filtering" {
		l := &list{}
		for _, x := range b.items {
			v, err := m.jvApply(given[0], []any{x}, s, at)
			if err != nil {
				return nil, err
			}
			if name == "mapping" {
				l.items = append(l.items, v)
			} else if yes, ok := v.(bool); !ok {
				return nil, undecided("whether something is kept")
			} else if yes {
				l.items = append(l.items, x)
			}
		}
		if len(given) < 2 {
			return nil, giveUp("what is collected")
		}
		return finish(l, given[1])
	}
	d := jvMap()
	if name == "partitioningBy" {
		jvPut(d, false, &list{})
		jvPut(d, true, &list{})
	}
	var keys []any
	for _, x := range b.items {
		k, err := m.jvApply(given[0], []any{x}, s, at)
		if err != nil {
			return nil, err
		}
		key, ok := jvKey(k)
		if !ok {
			return nil, undecided("a key that is not known")
		}
		in, there := d.get(key)
		if !there {
			in = &list{}
			jvPut(d, k, in)
		}
		l := in.(*list)
		l.items = append(l.items, x)
		keys = append(keys, k)
	}
	if name == "partitioningBy" {
		keys = []any{false, true}
	}
	if len(given) > 2 {
		return nil, giveUp("what is collected")
	}
	if len(given) == 2 {
		done := map[string]bool{}
		for _, k := range keys {
			key, _ := jvKey(k)
			if done[key] {
				continue
			}
			done[key] = true
			in, _ := d.get(key)
			v, err := finish(in.(*list), given[1])
			if err != nil {
				return nil, err
			}
			jvPut(d, k, v)
		}
	}
	return d, nil
}

func (m *machine) jvJoin(items []any, sep string, s *scope, at spot) (any, error) {
	parts := []string{}
	for _, x := range items {
		t, err := m.jvText(x, s, at)
		if err != nil {
			return nil, err
		}
		p, ok := t.(string)
		if !ok {
			return t, nil
		}
		parts = append(parts, p)
	}
	return strings.Join(parts, sep), nil
}

// jvMethod calls a method of a value that the library has; done is false where
// there is none of that name.
func (m *machine) jvMethod(base any, name string, args []any, s *scope, at spot) (any, bool, error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	switch b := base.(type) {
	case string:
		return m.jvString(b, name, args, s, at)
	case *content:
		switch name {
		case "close", "skip":
			return nil, true, nil
		case "readAllBytes", "toString", "trim", "strip", "stripTrailing":
			return b, true, nil
		case "lines":
			l := &list{}
			for t := range strings.SplitSeq(strings.TrimSuffix(b.text, "\n"), "\n") {
				l.items = append(l.items, t)
			}
			return l, true, nil
		}
		return m.jvString(b.text, name, args, s, at)
	case integer, float64, bool, character:
		switch name {
		case "intValue", "longValue", "booleanValue", "charValue", "shortValue":
			if f, ok := b.(float64); ok {
				return integer(math.Trunc(f)), true, nil
			}
			return b, true, nil
		case "doubleValue":
			f, _ := toNumber(b)
			return f, true, nil
		case "toString":
			return jvShow(b), true, nil
		case "equals":
			same, ok := jvEqual(b, arg(0))
			if !ok {
				return dontKnow("whether two things are the same"), true, nil
			}
			return same, true, nil
		case "compareTo", "compare":
			x, _ := toNumber(b)
			y, _ := toNumber(arg(0))
			return integer(compare(x, y)), true, nil
		case "hashCode":
			return b, true, nil
		}
	case *list:
		return m.jvList(b, name, args, s, at)
	case *envMap:
		switch name {
		case "get", "getOrDefault", "containsKey":
			if !known(arg(0)) {
				return nil, true, undecided("a variable whose name is not known")
			}
			v, ok := m.lookup(jvShow(arg(0)), at)
			switch {
			case name == "containsKey":
				return ok, true, nil
			case ok:
				return v, true, nil
			}
			return arg(1), true, nil
		}
		d := jvMap()
		for _, k := range m.envKeys() {
			jvPut(d, k, m.env.text(k))
		}
		return m.jvMapMethod(d, name, args, s, at)
	case pyPath:
		switch name {
		case "resolve":
			p := jvPath(arg(0))
			if !strings.HasPrefix(p, "/") {
				p = path.Join(string(b), p)
			}
			return pyPath(p), true, nil
		case "toString", "getPath", "getAbsolutePath":
			return string(b), true, nil
		case "toFile", "toPath", "toAbsolutePath", "normalize", "getAbsoluteFile":
			return b, true, nil
		case "getParent":
			return pyPath(path.Dir(string(b))), true, nil
		case "getName", "getFileName":
			return path.Base(string(b)), true, nil
		case "exists", "isFile", "canRead", "isDirectory":
			return m.there(string(b), name != "isDirectory", name == "exists" || name == "isDirectory"), true, nil
		}
	case *object:
		if b.dict {
			return m.jvMapMethod(b, name, args, s, at)
		}
		if b.class != nil && b.class.builtin {
			return m.jvSpecial(b, name, args, s, at)
		}
	}
	return nil, false, nil
}

// jvSpecial are the methods of objects that this package makes.
func (m *machine) jvSpecial(b *object, name string, args []any, s *scope, at spot) (any, bool, error) {
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	value, _ := b.get("value")
	switch b.class.name {
	case "Optional":
		if value != nil && !known(value) {
			switch name {
			case "map", "filter", "flatMap", "orElse", "orElseGet", "get", "orElseThrow", "isPresent", "getAsInt":
				return dontKnow("what may be there: " + value.(*opaque).String()), true, nil
			}
		}
		switch name {
		case "map", "flatMap", "mapToInt", "mapToObj":
			if value == nil {
				return b, true, nil
			}
			v, err := m.jvApply(arg(0), []any{value}, s, at)
			if err != nil {
				return nil, true, err
			}
			if name == "flatMap" {
				return v, true, nil
			}
			return jvOptional(v), true, nil
		case "filter":
			if value == nil {
				return b, true, nil
			}
			v, err := m.jvApply(arg(0), []any{value}, s, at)
			if err != nil {
				return nil, true, err
			}
			yes, ok := v.(bool)
			if !ok {
				return nil, true, undecided("whether something is kept")
			}
			if yes {
				return b, true, nil
			}
			return jvOptional(nil), true, nil
		case "orElse":
			if value != nil {
				return value, true, nil
			}
			return arg(0), true, nil
		case "orElseGet":
			if value != nil {
				return value, true, nil
			}
			v, err := m.jvApply(arg(0), nil, s, at)
			return v, true, err
		case "or":
			if value != nil {
				return b, true, nil
			}
			v, err := m.jvApply(arg(0), nil, s, at)
			return v, true, err
		case "orElseThrow", "get", "getAsInt":
			if value != nil {
				return value, true, nil
			}
			if len(args) > 0 {
				v, err := m.jvApply(arg(0), nil, s, at)
				if err != nil {
					return nil, true, err
				}
				return nil, true, &thrown{v}
			}
			return nil, true, raise("NoSuchElementException", "No value present")
		case "isPresent":
			return value != nil, true, nil
		case "isEmpty":
			return value == nil, true, nil
		case "ifPresent", "ifPresentOrElse":
			if value != nil {
				_, err := m.jvApply(arg(0), []any{value}, s, at)
				return nil, true, err
			}
			if len(args) > 1 {
				_, err := m.jvApply(arg(1), nil, s, at)
				return nil, true, err
			}
			return nil, true, nil
		case "stream":
			l := &list{}
			if value != nil {
				l.items = []any{value}
			}
			return l, true, nil
		}
	case "Entry":
		switch name {
		case "getKey":
			v, _ := b.get("key")
			return v, true, nil
		case "getValue":
			return value, true, nil
		case "setValue":
			b.set("value", arg(0))
			return value, true, nil
		}
	case "Atomic":
		old := value
		switch name {
		case "get", "getPlain", "intValue", "getAcquire":
			return value, true, nil
		case "set", "lazySet":
			b.set("value", arg(0))
			return nil, true, nil
		case "getAndSet":
			b.set("value", arg(0))
			return old, true, nil
		case "incrementAndGet", "getAndIncrement", "decrementAndGet", "getAndDecrement", "addAndGet", "getAndAdd":
			by := any(integer(1))
			if strings.Contains(name, "ecrement") {
				by = integer(-1)
			} else if len(args) > 0 {
				by = args[0]
			}
			v, err := m.jvOperate("+", old, by, s, at)
			if err != nil {
				return nil, true, err
			}
			b.set("value", v)
			if strings.HasPrefix(name, "getAnd") {
				return old, true, nil
			}
			return v, true, nil
		case "updateAndGet", "compareAndSet":
			if name == "updateAndGet" {
				v, err := m.jvApply(arg(0), []any{old}, s, at)
				b.set("value", v)
				return v, true, err
			}
			same, ok := jvEqual(old, arg(0))
			if same && ok {
				b.set("value", arg(1))
			}
			return same, true, nil
		}
	case "StringBuilder":
		t, _ := b.get("text")
		text, _ := t.(string)
		switch name {
		case "append", "insert":
			x := arg(0)
			if name == "insert" {
				x = arg(1)
			}
			v, err := m.jvText(x, s, at)
			if err != nil {
				return nil, true, err
			}
			add, ok := v.(string)
			if !ok {
				return nil, true, undecided("a text with what is not known")
			}
			if len(text)+len(add) > maxText {
				return nil, true, spent("a text that is too long")
			}
			if i, isInt := arg(0).(integer); name == "insert" && isInt && i >= 0 && int(i) <= len(text) {
				b.set("text", text[:i]+add+text[i:])
			} else {
				b.set("text", text+add)
			}
			return b, true, nil
		case "toString":
			return text, true, nil
		case "setLength":
			if i, ok := arg(0).(integer); ok && i >= 0 && int(i) <= len(text) {
				b.set("text", text[:i])
				return nil, true, nil
			}
		case "reverse":
			r := []rune(text)
			slices.Reverse(r)
			b.set("text", string(r))
			return b, true, nil
		case "deleteCharAt":
			if i, ok := arg(0).(integer); ok && i >= 0 && int(i) < len(text) {
				b.set("text", text[:i]+text[i+1:])
				return b, true, nil
			}
		}
		return m.jvString(text, name, args, s, at)
	case "StringJoiner":
		p, _ := b.get("parts")
		l := p.(*list)
		switch name {
		case "add":
			l.items = append(l.items, arg(0))
			return b, true, nil
		case "toString":
			sep, _ := b.get("sep")
			v, err := m.jvJoin(l.items, show(sep), s, at)
			t, ok := v.(string)
			if err != nil || !ok {
				return v, true, err
			}
			before, _ := b.get("before")
			after, _ := b.get("after")
			return show(before) + t + show(after), true, nil
		}
	case "Pattern":
		re := b.other.(*regexp.Regexp)
		if name == "matcher" {
			t, ok := arg(0).(string)
			if !ok {
				return nil, true, giveUp("what a text matches")
			}
			x := jvBuiltin("Matcher")
			x.other = re
			x.set("text", t)
			return x, true, nil
		}
		if name == "split" || name == "asPredicate" {
			return nil, true, giveUp("a regular expression")
		}
	case "Matcher":
		re := b.other.(*regexp.Regexp)
		t, _ := b.get("text")
		text := show(t)
		switch name {
		case "matches", "find", "lookingAt":
			from := 0
			if c := b.cells["next"]; c != nil && name == "find" {
				from = int(c.v.(integer))
			}
			var loc []int
			for _, all := range re.FindAllStringSubmatchIndex(text, -1) { // those before count too: what a pattern sees in front
				if all[0] >= from {
					loc = all
					break
				}
			}
			yes := loc != nil && (name == "find" || loc[0] == 0 && (name == "lookingAt" || loc[1] == len(text)))
			b.remove("groups")
			if !yes && name == "find" {
				b.set("next", integer(len(text)+1))
			}
			if yes {
				next := loc[1]
				if loc[0] == loc[1] {
					next++
				}
				b.set("next", integer(next))
				b.set("start", integer(loc[0]))
				b.set("end", integer(loc[1]))
				l := &list{}
				for i := 0; i < len(loc); i += 2 {
					if loc[i] < 0 {
						l.items = append(l.items, nil)
					} else {
						l.items = append(l.items, text[loc[i]:loc[i+1]])
					}
				}
				b.set("groups", l)
			}
			return yes, true, nil
		case "reset":
			b.remove("groups")
			b.remove("next")
			return b, true, nil
		case "groupCount":
			return integer(re.NumSubexp()), true, nil
		case "start", "end":
			if c := b.cells[name]; c != nil && len(args) == 0 && b.cells["groups"] != nil {
				return c.v, true, nil
			}
			return nil, true, giveUp("where a group begins")
		case "replaceAll", "replaceFirst":
			to, ok := arg(0).(string)
			if !ok || strings.ContainsAny(to, "\\$") {
				return nil, true, giveUp("what stands in for what fits")
			}
			n := 0
			return re.ReplaceAllStringFunc(text, func(m string) string {
				if n++; n > 1 && name == "replaceFirst" {
					return m
				}
				return to
			}), true, nil
		case "hitEnd", "results", "appendReplacement", "appendTail", "region", "usePattern", "toMatchResult":
			return nil, true, giveUp("what a text matches")
		case "group":
			g, ok := b.get("groups")
			if !ok {
				return nil, true, raise("IllegalStateException", "No match found")
			}
			i := 0
			switch k := arg(0).(type) {
			case integer:
				i = int(k)
			case string:
				i = re.SubexpIndex(k)
			}
			items := g.(*list).items
			if i < 0 || i >= len(items) {
				return nil, true, raise("IndexOutOfBoundsException", "No group")
			}
			return items[i], true, nil
		}
	case "Thread":
		switch name {
		case "start", "run":
			run, _ := b.get("run")
			_, err := m.jvApply(run, nil, s, at)
			return nil, true, jvBeside(name, err)
		}
		return b, true, nil
	case "Scanner":
		c := b.cells["lines"]
		if c == nil {
			break
		}
		l := c.v.(*list)
		switch name {
		case "hasNextLine":
			return len(l.items) > 0, true, nil
		case "nextLine":
			if len(l.items) == 0 {
				return nil, true, raise("NoSuchElementException", "No line found")
			}
			t := l.items[0]
			l.items = l.items[1:]
			return t, true, nil
		case "close":
			return nil, true, nil
		}
		return nil, true, giveUp("what is read by parts")
	case "Future":
		switch name {
		case "join", "get":
			return value, true, nil
		case "thenAccept", "thenApply", "thenRun":
			var with []any
			if name != "thenRun" {
				with = []any{value}
			}
			v, err := m.jvApply(arg(0), with, s, at)
			f := jvBuiltin("Future")
			f.set("value", v)
			return f, true, err
		}
	case "Duration":
		v, _ := b.get("ms")
		ms, _ := v.(integer)
		switch name {
		case "toMillis":
			return ms, true, nil
		case "toSeconds", "getSeconds":
			return ms / 1000, true, nil
		case "toMinutes":
			return ms / 60_000, true, nil
		case "toHours":
			return ms / 3_600_000, true, nil
		case "toDays":
			return ms / 86_400_000, true, nil
		}
	case "URI":
		switch name {
		case "getHost", "getPort", "getScheme", "getPath", "getQuery":
			v, _ := b.get(strings.ToLower(name[3:]))
			if v == any("") {
				v = nil
			}
			return v, true, nil
		}
	case "Iterator":
		l, _ := b.get("list")
		i, _ := b.get("at")
		items, n := l.(*list).items, int(i.(integer))
		switch name {
		case "hasNext":
			return n < len(items), true, nil
		case "next":
			if n >= len(items) {
				return nil, true, raise("NoSuchElementException", "")
			}
			b.set("at", integer(n+1))
			return items[n], true, nil
		}
	}
	if jvErrors[b.class.name] != "" {
		switch name {
		case "getMessage", "getLocalizedMessage":
			msg, _ := b.get("message")
			return msg, true, nil
		case "getCause":
			return nil, true, nil
		case "printStackTrace", "addSuppressed":
			return nil, true, nil
		case "toString":
			return dontKnow("an error as text"), true, nil
		}
	}
	if name == "equals" {
		return b == first(args), true, nil
	}
	return nil, false, nil
}

func (m *machine) jvString(b, name string, args []any, s *scope, at spot) (any, bool, error) {
	if o := unclear(args, 3); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	text := func(i int) string { return jvShow(arg(i)) }
	r := []rune(b)
	place := func(i int) (int, bool) {
		n, ok := arg(i).(integer)
		return int(n), ok && n >= 0 && int(n) <= len(r)
	}
	outOf := raise("StringIndexOutOfBoundsException", "index out of bounds")
	switch name {
	case "trim":
		return strings.Trim(b, " \t\r\n\f\v\x00"), true, nil
	case "strip":
		return strings.TrimSpace(b), true, nil
	case "stripLeading":
		return strings.TrimLeftFunc(b, unicode.IsSpace), true, nil
	case "stripTrailing":
		return strings.TrimRightFunc(b, unicode.IsSpace), true, nil
	case "isEmpty":
		return b == "", true, nil
	case "isBlank":
		return strings.TrimSpace(b) == "", true, nil
	case "length":
		return integer(len(r)), true, nil
	case "toString", "intern", "strip1":
		return b, true, nil
	case "toLowerCase":
		return strings.ToLower(b), true, nil
	case "toUpperCase":
		return strings.ToUpper(b), true, nil
	case "charAt":
		i, ok := place(0)
		if !ok || i >= len(r) {
			return nil, true, outOf
		}
		return character(r[i]), true, nil
	case "substring", "subSequence":
		from, ok := place(0)
		to := len(r)
		if len(args) > 1 {
			var ok2 bool
			to, ok2 = place(1)
			ok = ok && ok2
		}
		if !ok || from > to {
			return nil, true, outOf
		}
		return string(r[from:to]), true, nil
	case "indexOf", "lastIndexOf":
		if len(args) > 1 {
			from, ok := place(1)
			if !ok || name == "lastIndexOf" {
				return nil, true, giveUp("a place in a text")
			}
			if i := strings.Index(string(r[from:]), text(0)); i >= 0 {
				return integer(i + from), true, nil
			}
			return integer(-1), true, nil
		}
		if name == "indexOf" {
			return integer(strings.Index(b, text(0))), true, nil
		}
		return integer(strings.LastIndex(b, text(0))), true, nil
	case "contains":
		return strings.Contains(b, text(0)), true, nil
	case "startsWith":
		if len(args) > 1 {
			n, ok := arg(1).(integer)
			if !ok || n < 0 || int(n) > len(b) {
				return nil, true, giveUp("the front of a part of a text")
			}
			return strings.HasPrefix(b[n:], text(0)), true, nil
		}
		return strings.HasPrefix(b, text(0)), true, nil
	case "endsWith":
		return strings.HasSuffix(b, text(0)), true, nil
	case "equals", "contentEquals":
		same, ok := jvEqual(b, arg(0))
		if !ok {
			return dontKnow("whether two things are the same"), true, nil
		}
		return same, true, nil
	case "equalsIgnoreCase":
		return arg(0) != nil && strings.EqualFold(b, text(0)), true, nil
	case "compareTo", "compareToIgnoreCase":
		if name == "compareTo" {
			return integer(strings.Compare(b, text(0))), true, nil
		}
		return integer(strings.Compare(strings.ToLower(b), strings.ToLower(text(0)))), true, nil
	case "concat":
		return b + text(0), true, nil
	case "replace":
		return strings.ReplaceAll(b, text(0), text(1)), true, nil
	case "replaceAll", "replaceFirst", "matches", "split":
		re, err := m.compile(text(0))
		if err != nil {
			return nil, true, giveUp("a regular expression")
		}
		switch name {
		case "matches":
			return m.jvMatches(b, text(0))
		case "split":
			limit := -1
			if n, ok := arg(1).(integer); ok && n > 0 {
				limit = int(n)
			}
			parts := re.Split(b, limit)
			for limit < 0 && len(args) == 1 && len(parts) > 1 && parts[len(parts)-1] == "" {
				parts = parts[:len(parts)-1]
			}
			l := &list{}
			for _, p := range parts {
				l.items = append(l.items, p)
			}
			return l, true, nil
		}
		return replaced(re, b, name == "replaceAll", func(groups []string) string {
			t := text(1)
			for i := len(groups) - 1; i >= 0; i-- {
				t = strings.ReplaceAll(t, "$"+strconv.Itoa(i), groups[i])
			}
			return t
		}), true, nil
	case "repeat":
		n, ok := arg(0).(integer)
		if !ok || n < 0 || len(b)*int(n) > maxText {
			return nil, true, spent("a text that is too long")
		}
		return strings.Repeat(b, int(n)), true, nil
	case "lines":
		l := &list{}
		for t := range strings.SplitSeq(strings.TrimSuffix(b, "\n"), "\n") {
			l.items = append(l.items, t)
		}
		return l, true, nil
	case "chars", "toCharArray", "codePoints":
		l := &list{}
		for _, c := range r {
			if name == "toCharArray" {
				l.items = append(l.items, character(c))
			} else {
				l.items = append(l.items, integer(c))
			}
		}
		return l, true, nil
	case "format", "formatted":
		v, err := m.jvFormat(b, args, s, at)
		return v, true, err
	case "hashCode":
		h := int32(0)
		for _, c := range r {
			h = 31*h + int32(c)
		}
		return integer(h), true, nil
	case "getBytes":
		return dontKnow("bytes"), true, nil
	}
	return nil, false, nil
}

func (m *machine) jvList(b *list, name string, args []any, s *scope, at spot) (any, bool, error) {
	if o := clouded(b, name, args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	if err := m.use(len(b.items)); err != nil {
		return nil, true, err
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	apply := func(x ...any) (any, error) { return m.jvApply(arg(0), x, s, at) }
	yes := func(x any) (bool, error) {
		v, err := apply(x)
		if err != nil {
			return false, err
		}
		yes, ok := v.(bool)
		if !ok {
			return false, undecided("whether something is kept")
		}
		return yes, nil
	}
	index := func(x any) int {
		return slices.IndexFunc(b.items, func(y any) bool { same, _ := jvEqual(x, y); return same })
	}
	switch name {
	case "stream", "boxed", "parallelStream", "parallel", "sequential", "asLongStream", "iterator1", "toArray", "toList", "clone", "onClose", "unordered":
		return &list{items: slices.Clone(b.items)}, true, nil
	case "size", "count", "length":
		return integer(len(b.items)), true, nil
	case "isEmpty":
		return len(b.items) == 0, true, nil
	case "add", "addLast", "offer", "addFirst", "push", "offerLast", "offerFirst":
		if len(b.items) > maxItems {
			return nil, true, spent("a list that is too long")
		}
		x := arg(0)
		if len(args) == 2 {
			i, ok := args[0].(integer)
			if !ok || i < 0 || int(i) > len(b.items) {
				return nil, true, raise("IndexOutOfBoundsException", "")
			}
			b.items = slices.Insert(slices.Clone(b.items), int(i), args[1])
			return nil, true, nil
		}
		if b.set && index(x) >= 0 {
			return false, true, nil
		}
		if name == "addFirst" || name == "push" || name == "offerFirst" {
			b.items = append([]any{x}, b.items...)
		} else {
			b.items = append(b.items, x)
		}
		b.order()
		return true, true, nil
	case "addAll":
		items, err := m.jvItems(arg(len(args) - 1))
		if err != nil {
			return nil, true, err
		}
		for _, x := range items {
			if !b.set || index(x) < 0 {
				b.items = append(b.items, x)
			}
		}
		b.order()
		return len(items) > 0, true, nil
	case "get", "elementAt", "charAt":
		i, ok := arg(0).(integer)
		if !ok {
			return dontKnow("an element of a list"), true, nil
		}
		if i < 0 || int(i) >= len(b.items) {
			return nil, true, raise("IndexOutOfBoundsException", "index out of bounds")
		}
		return b.items[i], true, nil
	case "getFirst", "getLast", "first", "element", "peekFirst", "peek", "poll", "pop", "remove", "removeFirst", "pollFirst", "peekLast", "removeLast", "pollLast":
		if name == "remove" && len(args) == 1 {
			i, isInt := arg(0).(integer)
			boxed := jvBoxed(at.n)
			at := index(arg(0))
			if isInt && !b.set && !boxed {
				at = int(i)
			} else if isInt {
				isInt = false
			}
			if at < 0 || at >= len(b.items) {
				return false, true, nil
			}
			v := b.items[at]
			b.items = slices.Delete(slices.Clone(b.items), at, at+1)
			if isInt {
				return v, true, nil
			}
			return true, true, nil
		}
		if name == "peek" && len(args) == 1 { // of a stream
			for _, x := range b.items {
				if _, err := apply(x); err != nil {
					return nil, true, err
				}
			}
			return b, true, nil
		}
		if len(b.items) == 0 {
			if strings.HasPrefix(name, "p") && name != "pop" {
				return nil, true, nil
			}
			return nil, true, raise("NoSuchElementException", "")
		}
		last := strings.HasSuffix(name, "Last")
		v := b.items[0]
		if last {
			v = b.items[len(b.items)-1]
		}
		if strings.HasPrefix(name, "poll") || name == "pop" || strings.HasPrefix(name, "remove") {
			if last {
				b.items = b.items[:len(b.items)-1]
			} else {
				b.items = slices.Clone(b.items[1:])
			}
		}
		return v, true, nil
	case "set":
		i, ok := arg(0).(integer)
		if !ok || i < 0 || int(i) >= len(b.items) {
			return nil, true, raise("IndexOutOfBoundsException", "")
		}
		old := b.items[i]
		b.items[i] = arg(1)
		return old, true, nil
	case "contains":
		if !known(arg(0)) {
			return dontKnow("whether a list holds something"), true, nil
		}
		return index(arg(0)) >= 0, true, nil
	case "indexOf":
		return integer(index(arg(0))), true, nil
	case "subList":
		from, ok1 := arg(0).(integer)
		to, ok2 := arg(1).(integer)
		if !ok1 || !ok2 || from < 0 || int(to) > len(b.items) || from > to {
			return nil, true, raise("IndexOutOfBoundsException", "")
		}
		return &list{items: slices.Clone(b.items[from:to])}, true, nil
	case "clear":
		b.items = nil
		return nil, true, nil
	case "iterator", "listIterator":
		o := jvBuiltin("Iterator")
		o.set("list", b)
		o.set("at", integer(0))
		return o, true, nil
	case "forEach", "forEachOrdered":
		for _, x := range slices.Clone(b.items) {
			if _, err := apply(x); err != nil {
				return nil, true, err
			}
		}
		return nil, true, nil
	case "map", "mapToInt", "mapToObj", "flatMap", "mapToLong", "mapMulti", "mapToDouble", "asDoubleStream":
		l := &list{}
		for _, x := range b.items {
			v, err := apply(x)
			if err != nil {
				return nil, true, err
			}
			if y, ok := v.(*list); ok && name == "flatMap" {
				l.items = append(l.items, y.items...)
				continue
			}
			l.items = append(l.items, v)
		}
		return l, true, nil
	case "replaceAll":
		for i, x := range b.items {
			v, err := apply(x)
			if err != nil {
				return nil, true, err
			}
			b.items[i] = v
		}
		return nil, true, nil
	case "filter", "takeWhile", "dropWhile", "removeIf":
		l := &list{}
		dropping := name == "dropWhile"
		for _, x := range b.items {
			ok := true
			if name != "dropWhile" || dropping {
				var err error
				if ok, err = yes(x); err != nil {
					return nil, true, err
				}
			}
			switch {
			case name == "takeWhile" && !ok:
				return l, true, nil
			case name == "dropWhile":
				dropping = dropping && ok
				if !dropping {
					l.items = append(l.items, x)
				}
				continue
			}
			if ok == (name != "removeIf") {
				l.items = append(l.items, x)
			}
		}
		if name == "removeIf" {
			n := len(b.items)
			b.items = l.items
			return n != len(b.items), true, nil
		}
		return l, true, nil
	case "findFirst", "findAny":
		if len(b.items) == 0 {
			return jvOptional(nil), true, nil
		}
		return jvOptional(b.items[0]), true, nil
	case "anyMatch", "allMatch", "noneMatch":
		for _, x := range b.items {
			ok, err := yes(x)
			if err != nil {
				return nil, true, err
			}
			if ok == (name != "allMatch") {
				return name == "anyMatch", true, nil
			}
		}
		return name != "anyMatch", true, nil
	case "limit", "skip":
		n, ok := arg(0).(integer)
		if !ok || n < 0 {
			return nil, true, giveUp("a part of a list")
		}
		k := min(int(n), len(b.items))
		if name == "limit" {
			return &list{items: slices.Clone(b.items[:k])}, true, nil
		}
		return &list{items: slices.Clone(b.items[k:])}, true, nil
	case "distinct":
		l := &list{}
		for _, x := range b.items {
			if !slices.ContainsFunc(l.items, func(y any) bool { same, _ := jvEqual(x, y); return same }) {
				l.items = append(l.items, x)
			}
		}
		return l, true, nil
	case "reversed":
		l := &list{items: slices.Clone(b.items)}
		slices.Reverse(l.items)
		return l, true, nil
	case "sorted", "sort", "max", "min":
		if opaqueAmong(b.items) != nil {
			return nil, true, giveUp("a list that is sorted")
		}
		l := &list{items: slices.Clone(b.items)}
		var failed error
		slices.SortStableFunc(l.items, func(x, y any) int {
			v, err := m.jvCompare(arg(0), x, y, s, at)
			if err != nil {
				failed = err
			}
			return v
		})
		if failed != nil {
			return nil, true, failed
		}
		switch name {
		case "sort":
			b.items = l.items
			return nil, true, nil
		case "max", "min":
			if len(l.items) == 0 {
				return jvOptional(nil), true, nil
			}
			if name == "min" {
				return jvOptional(l.items[0]), true, nil
			}
			return jvOptional(l.items[len(l.items)-1]), true, nil
		}
		return l, true, nil
	case "sum":
		v := any(integer(0))
		for _, x := range b.items {
			var err error
			if v, err = m.jvOperate("+", v, x, s, at); err != nil {
				return nil, true, err
			}
		}
		return v, true, nil
	case "reduce":
		items := b.items
		fn := arg(0)
		acc := any(nil)
		if len(args) >= 2 {
			acc, fn = args[0], args[1]
		} else if len(items) == 0 {
			return jvOptional(nil), true, nil
		} else {
			acc, items = items[0], items[1:]
		}
		for _, x := range items {
			var err error
			if acc, err = m.jvApply(fn, []any{acc, x}, s, at); err != nil {
				return nil, true, err
			}
		}
		if len(args) == 1 {
			return jvOptional(acc), true, nil
		}
		return acc, true, nil
	case "collect":
		c, ok := arg(0).(*object)
		if !ok || c.class == nil || len(args) != 1 {
			return nil, true, giveUp("what is collected")
		}
		with, _ := c.get("args")
		given := []any{}
		if l, ok := with.(*list); ok {
			given = l.items
		}
		switch c.class.name {
		case "toList", "toUnmodifiableList":
			return &list{items: slices.Clone(b.items)}, true, nil
		case "toSet", "toUnmodifiableSet":
			v, done, err := m.jvList(b, "distinct", nil, s, at)
			if l, ok := v.(*list); ok {
				l.set = true
			}
			return v, done, err
		case "joining":
			sep := ""
			if len(given) > 0 {
				sep = jvShow(given[0])
			}
			v, err := m.jvJoin(b.items, sep, s, at)
			if t, ok := v.(string); ok && len(given) == 3 {
				return jvShow(given[1]) + t + jvShow(given[2]), true, err
			}
			return v, true, err
		case "counting":
			return integer(len(b.items)), true, nil
		case "partitioningBy", "groupingBy", "mapping", "filtering":
			v, err := m.jvCollect(c.class.name, b, given, s, at)
			return v, true, err
		case "toMap", "toUnmodifiableMap":
			if len(given) < 2 {
				return nil, true, giveUp("what is collected")
			}
			d := jvMap()
			for _, x := range b.items {
				k, err := m.jvApply(given[0], []any{x}, s, at)
				if err != nil {
					return nil, true, err
				}
				v, err := m.jvApply(given[1], []any{x}, s, at)
				if err != nil {
					return nil, true, err
				}
				key, ok := jvKey(k)
				if !ok {
					return nil, true, undecided("a key that is not known")
				}
				if old, there := d.get(key); there {
					if len(given) < 3 {
						return nil, true, raise("IllegalStateException", "Duplicate key")
					}
					if v, err = m.jvApply(given[2], []any{old, v}, s, at); err != nil {
						return nil, true, err
					}
				}
				jvPut(d, k, v)
			}
			return d, true, nil
		}
		return nil, true, giveUp("what is collected")
	case "toString":
		v, err := m.jvText(b, s, at)
		return v, true, err
	case "equals":
		same, ok := jvEqual(b, arg(0))
		return same, ok, nil
	case "close":
		return nil, true, nil
	}
	return nil, false, nil
}

// jvCompare orders two values, by a comparator where there is one.
func (m *machine) jvCompare(by, x, y any, s *scope, at spot) (int, error) {
	switch c := by.(type) {
	case nil:
	case *object:
		if c.class == nil || !c.class.builtin {
			v, err := m.jvApply(by, []any{x, y}, s, at)
			f, ok := toNumber(v)
			if err == nil && !ok {
				err = giveUp("a list that is sorted")
			}
			return compare(f, 0), err
		}
		with, _ := c.get("args")
		l, _ := with.(*list)
		if l != nil && len(l.items) > 0 {
			var err error
			if x, err = m.jvApply(l.items[0], []any{x}, s, at); err != nil {
				return 0, err
			}
			if y, err = m.jvApply(l.items[0], []any{y}, s, at); err != nil {
				return 0, err
			}
		}
		if c.class.name == "reverseOrder" {
			x, y = y, x
		}
	default:
		v, err := m.jvApply(by, []any{x, y}, s, at)
		f, ok := toNumber(v)
		if err == nil && !ok {
			err = giveUp("a list that is sorted")
		}
		return compare(f, 0), err
	}
	p, ok1 := x.(string)
	q, ok2 := y.(string)
	if ok1 && ok2 {
		return strings.Compare(p, q), nil
	}
	a, ok1 := x.(integer)
	b, ok2 := y.(integer)
	if ok1 && ok2 {
		return compare(float64(a), float64(b)), nil
	}
	return 0, giveUp("a list that is sorted")
}

// jvMapMethod are the methods of maps and of properties.
func (m *machine) jvMapMethod(o *object, name string, args []any, s *scope, at spot) (any, bool, error) {
	if x := clouded(nil, name, args); x != nil {
		return dontKnow("what is made of " + x.String()), true, nil
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	switch name {
	case "load", "loadFromXML":
		return nil, true, m.jvLoad(o, arg(0))
	case "size":
		return integer(len(o.keys)), true, nil
	case "isEmpty":
		return len(o.keys) == 0, true, nil
	case "entrySet", "keySet", "values", "stringPropertyNames", "keys":
		l := &list{}
		for _, k := range o.keys {
			switch name {
			case "entrySet":
				l.items = append(l.items, jvEntry(jvKeyOf(o, k), o.cells[k].v))
			case "values":
				l.items = append(l.items, o.cells[k].v)
			default:
				l.items = append(l.items, jvKeyOf(o, k))
			}
		}
		return l, true, nil
	case "forEach":
		for _, k := range slices.Clone(o.keys) {
			if _, err := m.jvApply(arg(0), []any{jvKeyOf(o, k), o.cells[k].v}, s, at); err != nil {
				return nil, true, err
			}
		}
		return nil, true, nil
	case "replaceAll":
		for _, k := range slices.Clone(o.keys) {
			v, err := m.jvApply(arg(0), []any{jvKeyOf(o, k), o.cells[k].v}, s, at)
			if err != nil {
				return nil, true, err
			}
			o.cells[k].v = v
		}
		return nil, true, nil
	case "firstEntry", "lastEntry", "firstKey", "lastKey":
		if len(o.keys) == 0 {
			return nil, true, nil
		}
		for _, k := range o.keys {
			if _, ok := jvKeyOf(o, k).(string); !ok {
				return nil, true, giveUp("the order of a map")
			}
		}
		k := slices.Min(o.keys) // it is a map that sorts
		if strings.HasPrefix(name, "last") {
			k = slices.Max(o.keys)
		}
		if strings.HasSuffix(name, "Key") {
			return jvKeyOf(o, k), true, nil
		}
		return jvEntry(jvKeyOf(o, k), o.cells[k].v), true, nil
	case "putAll":
		switch d := arg(0).(type) {
		case *object:
			for _, k := range d.keys {
				jvPut(o, jvKeyOf(d, k), d.cells[k].v)
			}
		case *envMap:
			for _, k := range m.envKeys() {
				jvPut(o, k, m.env.text(k))
			}
		default:
			return nil, true, giveUp("what a map is given")
		}
		return nil, true, nil
	case "clear":
		o.keys, o.cells = nil, map[string]*cell{}
		return nil, true, nil
	case "containsValue":
		for _, k := range o.keys {
			if same, _ := jvEqual(o.cells[k].v, arg(0)); same {
				return true, true, nil
			}
		}
		return false, true, nil
	case "toString":
		return dontKnow("a map as text"), true, nil
	}
	key, ok := jvKey(arg(0))
	if !ok {
		if len(args) > 0 && !known(args[0]) && !strings.HasPrefix(name, "put") && name != "setProperty" && name != "merge" {
			return dontKnow("an element chosen by what is not known"), true, nil
		}
		return nil, true, undecided("a key that is not known")
	}
	v, there := o.get(key)
	if !there {
		v = nil
	}
	switch name {
	case "get":
		return v, true, nil
	case "getProperty", "getString", "getOrDefault":
		if there {
			return v, true, nil
		}
		return arg(1), true, nil
	case "containsKey":
		return there, true, nil
	case "put", "setProperty":
		if !jvPut(o, arg(0), arg(1)) {
			return nil, true, undecided("a key that is not known")
		}
		return v, true, nil
	case "putIfAbsent":
		if v == nil {
			jvPut(o, arg(0), arg(1))
		}
		return v, true, nil
	case "remove":
		o.remove(key)
		return v, true, nil
	case "computeIfAbsent":
		if v != nil {
			return v, true, nil
		}
		x, err := m.jvApply(arg(1), []any{arg(0)}, s, at)
		if err == nil && x != nil {
			jvPut(o, arg(0), x)
		}
		return x, true, err
	case "computeIfPresent", "compute":
		if v == nil && name == "computeIfPresent" {
			return nil, true, nil
		}
		x, err := m.jvApply(arg(1), []any{arg(0), v}, s, at)
		if err == nil {
			jvPut(o, arg(0), x)
		}
		return x, true, err
	case "merge":
		if v == nil {
			jvPut(o, arg(0), arg(1))
			return arg(1), true, nil
		}
		x, err := m.jvApply(arg(2), []any{v, arg(1)}, s, at)
		if err == nil {
			jvPut(o, arg(0), x)
		}
		return x, true, err
	case "replace":
		if there {
			jvPut(o, arg(0), arg(1))
		}
		return v, true, nil
	}
	return nil, false, nil
}
