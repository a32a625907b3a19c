package trace

import (
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"
	"time"
)

// What viper makes of files, the environment, flags and defaults (spf13/viper 1.20,
// README, "Why use Viper?": the order in which they count).

// viper is a configuration of viper: all its keys are in lower case.
type viper struct {
	set, config, def *object
	prefix           string
	automatic, empty bool
	replace          *strings.Replacer
	bound            map[string][]string // variables by key
	flags            map[string]*goFlagged
	name, kind, file string
	dirs             []string
	read             bool
}

// goViper calls a function of viper or a method of what viper.New gives.
func (m *machine) goViper(f *opaque, args []goValue, at spot, s *goScope) (list []goValue, done bool, err error) {
	rest, ok := strings.CutPrefix(f.path, "github.com/spf13/viper.")
	if !ok {
		return nil, false, nil
	}
	name, own := strings.CutPrefix(rest, "New().")
	if rest == "New" && len(args) == 0 {
		if m.vipers[true] != nil { // which of them is meant is not told
			return nil, true, giveUp("several configurations of viper")
		}
		m.viperOf(true)
		return nil, false, nil
	}
	if strings.ContainsAny(name, ".(") {
		return nil, false, nil
	}
	v := m.viperOf(own)
	text := func(i int) (string, bool) {
		if i >= len(args) {
			return "", false
		}
		t, ok := args[i].v.(string)
		return t, ok
	}
	key, isKey := text(0)
	low := strings.ToLower(key)
	none := []goValue{{nil, nil}}
	switch name {
	case "SetDefault", "Set":
		if !isKey || len(args) != 2 {
			return nil, true, giveUp("a setting of viper")
		}
		to := v.def
		if name == "Set" {
			to = v.set
		}
		setPath(to, low, m.lowered(m.goOld(args[1], 0), 0))
		return nil, true, nil
	case "SetEnvPrefix":
		v.prefix = key
		return nil, true, nil
	case "AutomaticEnv":
		v.automatic = true
		return nil, true, nil
	case "AllowEmptyEnv":
		v.empty = len(args) == 1 && args[0].v == true
		return nil, true, nil
	case "SetEnvKeyReplacer":
		if len(args) == 1 {
			if o, ok := args[0].v.(*object); ok {
				if c := o.cells["r"]; c != nil {
					v.replace, _ = c.v.(*strings.Replacer)
					return nil, true, nil
				}
			}
		}
		return nil, true, giveUp("a replacer of viper")
	case "BindEnv":
		if !isKey {
			return nil, true, giveUp("a variable of viper")
		}
		if len(args) == 1 {
			v.bound[low] = append(v.bound[low], v.variable(low))
		}
		for i := range args[1:] {
			n, ok := text(i + 1)
			if !ok {
				return nil, true, giveUp("a variable of viper")
			}
			v.bound[low] = append(v.bound[low], n)
		}
		return none, true, nil
	case "MustBindEnv":
		return nil, true, giveUp("a variable of viper")
	case "BindPFlag":
		if len(args) == 2 && isKey {
			if x, ok := args[1].v.(*goFlagged); ok {
				v.flags[low] = x
				return none, true, nil
			}
		}
		return nil, true, giveUp("a flag of viper")
	case "BindPFlags":
		for _, x := range m.goFlags {
			v.flags[strings.ToLower(x.name)] = x
		}
		return none, true, nil
	case "SetConfigName":
		v.name, v.file = key, ""
		return nil, true, nil
	case "SetConfigType":
		v.kind = key
		return nil, true, nil
	case "SetConfigFile":
		if key != "" {
			v.file = key
		}
		return nil, true, nil
	case "AddConfigPath":
		if !isKey {
			return nil, true, undecided("where the settings are")
		}
		v.dirs = append(v.dirs, key)
		return nil, true, nil
	case "ReadInConfig", "MergeInConfig":
		why, err := m.viperRead(v, name == "MergeInConfig")
		if err != nil {
			return nil, true, err
		}
		if why == nil {
			return none, true, nil
		}
		return []goValue{{why, tFault}}, true, nil
	case "WatchConfig", "OnConfigChange", "SetTypeByDefaultValue":
		return nil, true, nil
	case "ConfigFileUsed":
		return []goValue{{v.file, tString}}, true, nil
	case "IsSet":
		if !isKey {
			return nil, true, undecided("which setting is asked for")
		}
		x, there, err := m.viperFind(v, low, false, at)
		return []goValue{{there && x != nil, tBool}}, true, err
	case "Unmarshal", "UnmarshalExact":
		if len(args) != 1 {
			return nil, true, giveUp("how viper fills a variable")
		}
		all, err := m.viperAll(v, at)
		if err != nil {
			return nil, true, err
		}
		return m.viperInto(args[0], all, s)
	case "UnmarshalKey":
		if len(args) != 2 || !isKey {
			return nil, true, giveUp("how viper fills a variable")
		}
		x, there, err := m.viperFind(v, low, true, at)
		if err != nil || !there {
			return none, true, err
		}
		return m.viperInto(args[1], x, s)
	case "Get", "GetString", "GetInt", "GetInt32", "GetInt64", "GetUint", "GetUint16", "GetUint32", "GetUint64", "GetBool", "GetFloat64", "GetDuration", "GetStringSlice":
		if !isKey {
			return nil, true, undecided("which setting is asked for")
		}
		x, _, err := m.viperFind(v, low, true, at)
		if err != nil {
			return nil, true, err
		}
		if x != nil && !known(x) {
			return []goValue{{dontKnow("the setting " + key), nil}}, true, nil
		}
		out, err := m.viperAs(strings.TrimPrefix(name, "Get"), x)
		return []goValue{out}, true, err
	}
	return nil, true, giveUp("%s of viper", name)
}

func (m *machine) viperOf(own bool) *viper {
	if m.vipers[own] == nil {
		if m.vipers == nil {
			m.vipers = map[bool]*viper{}
		}
		m.vipers[own] = &viper{set: newObject(), config: newObject(), def: newObject(), bound: map[string][]string{}, flags: map[string]*goFlagged{}, name: "config"}
	}
	return m.vipers[own]
}

// lowered is data with its keys in lower case.
func (m *machine) lowered(v any, depth int) any {
	o, ok := v.(*object)
	if !ok || depth > 20 || m.use(64+64*len(o.keys)) != nil {
		return v
	}
	w := newObject()
	for _, k := range o.keys {
		w.set(strings.ToLower(k), m.lowered(o.cells[k].v, depth+1))
	}
	return w
}

// variable is the name of the variable of a key, before anything in it is replaced.
func (v *viper) variable(key string) string {
	if v.prefix != "" {
		key = v.prefix + "_" + key
	}
	return strings.ToUpper(key)
}

// viperFind is a setting by its key.
func (m *machine) viperFind(v *viper, key string, flags bool, at spot) (any, bool, error) {
	in := func(o *object) (any, bool) {
		var x any = o
		for p := range strings.SplitSeq(key, ".") {
			o, ok := x.(*object)
			if !ok || o.cells[p] == nil {
				return nil, false
			}
			x = o.cells[p].v
		}
		return x, true
	}
	env := func(name string) (string, bool) {
		if v.replace != nil { // in each name, bound ones too
			name = v.replace.Replace(name)
		}
		t, ok := m.lookup(name, at)
		return t, ok && (t != "" || v.empty)
	}
	if x, ok := in(v.set); ok {
		return x, true, nil
	}
	f := v.flags[key]
	if f != nil && f.given {
		return f.held(), true, nil
	}
	if v.automatic {
		if t, ok := env(v.variable(key)); ok {
			return t, true, nil
		}
	}
	for _, name := range v.bound[key] {
		if t, ok := env(name); ok {
			return t, true, nil
		}
	}
	for _, o := range []*object{v.config, v.def} {
		if x, ok := in(o); ok {
			return x, true, nil
		}
	}
	if f != nil && flags {
		return f.held(), true, nil
	}
	return nil, false, nil
}

// held is what a flag holds.
func (f *goFlagged) held() any {
	if f.cell == nil {
		return dontKnow("what the flag " + f.name + " holds")
	}
	return f.cell.v.v
}

// viperAll is all that is set, by keys that are known: a variable alone makes no key.
func (m *machine) viperAll(v *viper, at spot) (*object, error) {
	keys := map[string]bool{}
	var add func(o *object, prefix string, depth int)
	add = func(o *object, prefix string, depth int) {
		if m.use(64*len(o.keys)) != nil {
			return // the next step gives up
		}
		for _, k := range o.keys {
			if in, ok := o.cells[k].v.(*object); ok && depth < 20 && len(in.keys) > 0 {
				add(in, prefix+k+".", depth+1)
				continue
			}
			keys[prefix+k] = true
		}
	}
	for _, o := range []*object{v.set, v.config, v.def} {
		add(o, "", 0)
	}
	for k := range v.bound {
		keys[k] = true
	}
	for k := range v.flags {
		keys[k] = true
	}
	all := newObject()
	for _, k := range slices.Sorted(maps.Keys(keys)) {
		x, there, err := m.viperFind(v, k, true, at)
		if err != nil {
			return nil, err
		}
		if there && x != nil {
			setPath(all, k, x)
		}
	}
	return all, nil
}

// viperRead reads the file of the settings; why says what is wrong with it.
func (m *machine) viperRead(v *viper, merge bool) (why *goFault, err error) {
	kinds := []string{"json", "toml", "yaml", "yml", "properties", "props", "prop", "hcl", "tfvars", "dotenv", "env", "ini"}
	file := ""
	if v.file != "" {
		if p, ok := m.treePath(v.file); ok {
			if _, there := m.e.Loader.Text(p); there {
				file = p
			}
		}
		if file == "" {
			return &goFault{msg: "open " + v.file + ": no such file or directory"}, nil
		}
	}
	for _, d := range v.dirs {
		if strings.HasPrefix(d, "$") || strings.HasPrefix(d, "~") {
			continue // a folder of the machine
		}
		dir, ok := m.treePath(d)
		if !ok || file != "" {
			continue
		}
		for _, k := range kinds {
			if p := path.Join(dir, v.name+"."+k); file == "" {
				if _, there := m.e.Loader.Text(p); there {
					file = p
				}
			}
		}
		if p := path.Join(dir, v.name); file == "" && v.kind != "" {
			if _, there := m.e.Loader.Text(p); there {
				return nil, giveUp("a file of settings without an ending")
			}
		}
	}
	if file == "" {
		return &goFault{msg: "Config File " + strconv.Quote(v.name) + " Not Found", path: "github.com/spf13/viper.ConfigFileNotFoundError"}, nil
	}
	d := m.readFile(file)
	c, ok := d.(*content)
	if !ok || c.data == nil {
		return nil, giveUp("a file of settings")
	}
	x, err := m.fromValue(c.data, 0)
	if err != nil {
		return nil, err
	}
	o, ok := m.lowered(m.fitted(x), 0).(*object)
	if !ok {
		return &goFault{msg: "While parsing config"}, nil
	}
	if v.read && merge {
		m.underlay(o, v.config, 0)
	}
	v.config, v.read, v.file = o, true, file
	return nil, nil
}

// viperAs is a setting as a getter gives it (spf13/cast 1.7): what does not fit is
// the zero of its type.
func (m *machine) viperAs(kind string, x any) (goValue, error) {
	text := ""
	switch y := x.(type) {
	case nil:
	case *list, *object:
		if kind != "" && kind != "StringSlice" {
			x = nil
		}
	default:
		text = show(y)
	}
	switch kind {
	case "":
		return m.goFrom(x), nil
	case "String":
		return goValue{text, tString}, nil
	case "Bool":
		b, _ := strconv.ParseBool(text)
		if n, ok := x.(integer); ok {
			b = n != 0
		}
		return goValue{b, tBool}, nil
	case "Float64":
		n, _ := strconv.ParseFloat(text, 64)
		return goValue{n, tFloat}, nil
	case "Duration":
		d, err := time.ParseDuration(text)
		if n, e := strconv.ParseInt(text, 10, 64); err != nil && e == nil {
			d = time.Duration(n)
		}
		return goValue{integer(d), tLength}, nil
	case "StringSlice":
		l := &goList{}
		switch y := x.(type) {
		case *list:
			for _, z := range y.items {
				l.a = append(l.a, &goCell{v: goValue{show(z), tString}, t: tString})
			}
		case string:
			for _, w := range strings.Fields(y) {
				l.a = append(l.a, &goCell{v: goValue{w, tString}, t: tString})
			}
		}
		return goValue{l, &goType{kind: goSlice, elem: tString}}, nil
	}
	t := goBasic[strings.ToLower(kind)]
	if t == nil {
		t = tInt
	}
	n := viperInt(x, text)
	if n < 0 && strings.HasPrefix(kind, "Uint") {
		n = 0
	}
	return goValue{wrapped(integer(n), t), t}, nil
}

// viperInt is a number as spf13/cast makes it: 0 in front means a number to the base
// eight, a fraction of zeros does not count, and what is no number is 0.
func viperInt(x any, text string) int64 {
	switch y := x.(type) {
	case float64:
		return int64(y)
	case bool:
		if y {
			return 1
		}
		return 0
	}
	if whole, zeros, ok := strings.Cut(text, "."); ok && zeros != "" && strings.Trim(zeros, "0") == "" {
		text = whole
	}
	n, err := strconv.ParseInt(text, 0, 64)
	if err != nil {
		return 0
	}
	return n
}

// viperInto fills a variable (mapstructure 2, with WeaklyTypedInput).
func (m *machine) viperInto(into goValue, x any, s *goScope) ([]goValue, bool, error) {
	c, ok := into.v.(*goCell)
	if !ok {
		return nil, true, giveUp("what viper fills")
	}
	bad, err := m.viperFill(c, x, s, 0)
	if err != nil {
		return nil, true, err
	}
	if bad != "" {
		return []goValue{{&goFault{msg: bad}, tFault}}, true, nil
	}
	return []goValue{{nil, nil}}, true, nil
}

func (m *machine) viperFill(c *goCell, x any, s *goScope, depth int) (bad string, err error) {
	t := c.t
	if t == nil {
		t = c.v.t
	}
	u := t.under()
	if depth > 12 || u == nil {
		return "", giveUp("what viper fills")
	}
	if x == nil {
		return "", nil
	}
	if !known(x) {
		c.v = goValue{x, t}
		return "", nil
	}
	text, isText := x.(string)
	switch {
	case t == tLength:
		d, err := time.ParseDuration(text)
		if n, ok := x.(integer); ok {
			d, err = time.Duration(n), nil
		}
		if err != nil {
			return "invalid duration", nil
		}
		c.v = goValue{integer(d), t}
	case u.kind == goStruct:
		o, ok := x.(*object)
		r, isRecord := c.v.v.(*goRecord)
		if !ok || !isRecord || len(r.fields) != len(u.fields) {
			return "expected a map", nil
		}
		for i, f := range u.fields {
			tag, squash := "", false
			if j := strings.Index(f.tag, `mapstructure:"`); j >= 0 {
				tag, _, _ = strings.Cut(f.tag[j+len(`mapstructure:"`):], `"`)
				var more string
				tag, more, _ = strings.Cut(tag, ",")
				squash = slices.Contains(strings.Split(more, ","), "squash")
			}
			if tag == "-" {
				continue
			}
			if squash {
				if bad, err = m.viperFill(r.fields[i], x, s, depth+1); bad != "" || err != nil {
					return bad, err
				}
				continue
			}
			if tag == "" {
				tag = f.name
			}
			for _, k := range o.keys {
				if strings.EqualFold(k, tag) {
					if bad, err = m.viperFill(r.fields[i], o.cells[k].v, s, depth+1); bad != "" || err != nil {
						return bad, err
					}
				}
			}
		}
	case u.kind == goPointer:
		in, ok := c.v.v.(*goCell)
		if !ok {
			z, err := m.goZero(u.elem, s)
			if err != nil {
				return "", err
			}
			in = &goCell{v: z, t: u.elem}
		}
		if bad, err = m.viperFill(in, x, s, depth+1); bad != "" || err != nil {
			return bad, err
		}
		c.v = goValue{in, t}
	case u.kind == goString:
		switch x.(type) {
		case *list, *object:
			return "expected a string", nil
		}
		if b, ok := x.(bool); ok {
			x = map[bool]string{true: "1", false: "0"}[b]
		}
		c.v = goValue{show(x), t}
	case u.kind == goInt:
		if isText {
			n, e := strconv.ParseInt(text, 0, 64)
			if text == "" {
				n, e = 0, nil
			}
			if e != nil {
				return "cannot parse as a number", nil
			}
			c.v = goValue{integer(n), t}
			break
		}
		switch x.(type) {
		case *list, *object:
			return "expected a number", nil
		}
		c.v = goValue{integer(viperInt(x, show(x))), t}
	case u.kind == goBool:
		b, ok := x.(bool)
		if n, isNumber := x.(integer); isNumber {
			b, ok = n != 0, true
		}
		if isText {
			var e error
			b, e = strconv.ParseBool(text)
			ok = e == nil || text == ""
		}
		if !ok {
			return "cannot parse as a bool", nil
		}
		c.v = goValue{b, t}
	case u.kind == goSlice && isText:
		l := &goList{}
		if text != "" {
			for _, w := range strings.Split(text, ",") {
				in := &goCell{t: u.elem}
				if bad, err = m.viperFill(in, w, s, depth+1); bad != "" || err != nil {
					return bad, err
				}
				l.a = append(l.a, in)
			}
		}
		c.v = goValue{l, t}
	default:
		return m.goFillIn(c, x, false, s, depth)
	}
	return "", nil
}
