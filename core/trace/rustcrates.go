package trace

import (
	"math"
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/rust"
	"ubique/core/value"
)

// Crates that read settings: serde 1 with serde_json 1, toml 0.9 and serde_yaml 0.9, envy
// 0.4, config 0.15, clap 4 (documentation of each; read 2026-11).

// rsFromText reads a text as a value of a type.
func (m *machine) rsFromText(kind string, text any, t *rsT, at rsAt) (any, error) {
	src, ok := rsOpened(text).(string)
	if j, is := rsOpened(text).(*rsJSON); is {
		return m.rsDecoded(t, j.v, false, at)
	}
	if !ok {
		return dontKnow("what is read from a text that is not known"), nil
	}
	lines := place.NewLines([]byte(src))
	var d *document.Node
	var err error
	switch kind {
	case "toml":
		d, err = document.TOML("", []byte(src), lines)
	case "serde_yaml", "serde_yml":
		docs, problem := document.YAML("", []byte(src), lines)
		if err = problem; len(docs) > 0 {
			d = docs[0]
		}
	default:
		d, err = document.JSON("", []byte(src), lines, kind == "json5")
	}
	if err != nil || d == nil {
		return rsErr("Error", "a text that cannot be read"), nil
	}
	return m.rsDecoded(t, value.FromDocument(d), false, at)
}

// rsDecoded is a value of a type out of what was read, as a result.
func (m *machine) rsDecoded(t *rsT, v *value.Value, texts bool, at rsAt) (any, error) {
	x, bad, err := m.rsDecode(t, v, texts, 0, at)
	switch {
	case err != nil:
		return nil, err
	case bad != "":
		return rsErr("Error", bad), nil
	}
	return rsOk(x), nil
}

// rsDecode makes a value of a type; bad says what does not fit. With texts, numbers and
// the like may be written as texts.
func (m *machine) rsDecode(t *rsT, v *value.Value, texts bool, depth int, at rsAt) (x any, bad string, err error) {
	if depth > 40 {
		return nil, "", spent("nested too deep")
	}
	if t == nil || t.name == "Value" || t.name == "Table" {
		return &rsJSON{v}, "", nil
	}
	if texts && v.Kind == value.Str && t.def == nil {
		switch {
		case rsWidth[t.name] != 0, t.name == "f64", t.name == "f32", t.name == "bool":
			r, err := m.rsParse(v.Text, t, at)
			if d, ok := r.(*rsData); ok && err == nil {
				if in, well := d.holding(); well {
					return in, "", nil
				}
				return nil, "a value that is no " + t.name, nil
			}
			return nil, "", err
		case t.name == "Vec":
			l := &rsList{}
			for _, w := range strings.Split(v.Text, ",") {
				in, bad, err := m.rsDecode(t.arg(0), value.Text(w, v.At), true, depth+1, at)
				if bad != "" || err != nil {
					return nil, bad, err
				}
				l.items = append(l.items, &rsCell{v: in})
			}
			return l, "", nil
		}
	}
	switch {
	case t.name == "Option":
		if v.Kind == value.Null || v.Kind == value.Undef {
			return rsNone(), "", nil
		}
		in, bad, err := m.rsDecode(t.arg(0), v, texts, depth+1, at)
		return rsSome(in), bad, err
	case t.def != nil:
		return m.rsDecodeDef(t, v, texts, depth, at)
	case rsWidth[t.name] != 0:
		if v.Kind != value.Num || v.Num != math.Trunc(v.Num) || math.Abs(v.Num) > 1<<52 || !rsFits(int64(v.Num), t.name) {
			return nil, "a value that is no " + t.name, nil
		}
		return rsInt{int64(v.Num), t.name}, "", nil
	case t.name == "f64" || t.name == "f32":
		if v.Kind == value.Num {
			return v.Num, "", nil
		}
		return nil, "a value that is no number", nil
	case t.name == "bool":
		if v.Kind == value.Bool {
			return v.Num != 0, "", nil
		}
		return nil, "a value that is no boolean", nil
	case t.name == "String" || t.name == "str" || t.name == "PathBuf":
		if v.Kind == value.Str {
			return v.Text, "", nil
		}
		if texts && v.Kind == value.Num {
			return strconv.FormatFloat(v.Num, 'f', -1, 64), "", nil
		}
		return nil, "a value that is no text", nil
	case t.name == "IpAddr" || t.name == "Ipv4Addr" || t.name == "SocketAddr" || t.name == "Ipv6Addr":
		if v.Kind != value.Str {
			return nil, "a value that is no address", nil
		}
		r, err := m.rsParse(v.Text, t, at)
		if d, ok := r.(*rsData); ok && err == nil {
			if in, well := d.holding(); well {
				return in, "", nil
			}
			return nil, "a value that is no address", nil
		}
		return nil, "", err
	case t.name == "Vec" || t.name == "HashSet":
		if v.Kind != value.List {
			return nil, "a value that is no list", nil
		}
		l := &rsList{}
		for _, k := range v.Kids {
			in, bad, err := m.rsDecode(t.arg(0), k, texts, depth+1, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			l.items = append(l.items, &rsCell{v: in})
		}
		return l, "", nil
	case t.name == "HashMap" || t.name == "BTreeMap" || t.name == "IndexMap":
		if v.Kind != value.Object {
			return nil, "a value that is no map", nil
		}
		mp := newRsMap(t.name == "BTreeMap")
		for i, k := range v.Keys {
			in, bad, err := m.rsDecode(t.arg(1), v.Kids[i], texts, depth+1, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			mp.put(k, in)
		}
		return mp, "", nil
	case t.name == "()" && v.Kind == value.List && len(v.Kids) == len(t.args):
		l := &rsList{tuple: true}
		for i, k := range v.Kids {
			in, bad, err := m.rsDecode(t.args[i], k, texts, depth+1, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			l.items = append(l.items, &rsCell{v: in})
		}
		return l, "", nil
	}
	return nil, "", giveUp("how a %s is read", t.name)
}

func (m *machine) rsDecodeDef(t *rsT, v *value.Value, texts bool, depth int, at rsAt) (any, string, error) {
	d := t.def
	if !d.traits["Deserialize"] {
		return nil, "", giveUp("how a %s is read", t.name)
	}
	serde := []string{"serde"}
	style := rsRenameAll(d.item.Attrs, "serde", "rename_all")
	if rsAttr(d.item.Attrs, serde, "try_from") != nil || rsAttr(d.item.Attrs, serde, "from") != nil || rsAttr(d.item.Attrs, serde, "tag") != nil || rsAttr(d.item.Attrs, serde, "untagged") != nil {
		return nil, "", giveUp("how a %s is read", t.name)
	}
	fr := &rsFrame{mod: d.mod, self: d, types: map[string]*rsT{}}
	for i, g := range d.item.Generics {
		fr.types[g.Name] = t.arg(i)
	}
	if d.item.Kind == rust.EnumItem {
		if v.Kind != value.Str {
			return nil, "", giveUp("how a %s is read", t.name)
		}
		for _, va := range d.item.Variants {
			name := rsStyled(va.Name, style)
			if r := rsAttr(va.Attrs, serde, "rename"); r != nil && r.Value != nil {
				name = r.Value.Text
			}
			if a := rsAttr(va.Attrs, serde, "alias"); name == v.Text || a != nil && a.Value != nil && a.Value.Text == v.Text {
				return &rsData{def: d, typ: d.name, variant: va.Name}, "", nil
			}
		}
		return nil, "unknown variant " + v.Text, nil
	}
	x := &rsData{def: d, typ: d.name}
	if d.item.Tuple { // of one field: as that is
		if len(d.item.Fields) != 1 {
			return nil, "", giveUp("how a %s is read", t.name)
		}
		in, bad, err := m.rsDecode(m.rsType(d.item.Fields[0].Type, fr), v, texts, depth+1, at)
		x.fields = []*rsCell{{v: in}}
		return x, bad, err
	}
	if v.Kind != value.Object {
		return nil, "a value that is no map", nil
	}
	get := func(name string) *value.Value {
		for i, k := range v.Keys {
			if k == name || texts && strings.EqualFold(k, name) {
				return v.Kids[i]
			}
		}
		return nil
	}
	var whole *rsData
	if a := rsAttr(d.item.Attrs, serde, "default"); a != nil {
		w, err := m.rsDefault(t)
		if err != nil {
			return nil, "", err
		}
		whole, _ = w.(*rsData)
	}
	used := map[string]bool{}
	for _, f := range d.item.Fields {
		ft := m.rsType(f.Type, fr)
		name := rsStyled(f.Name, style)
		if style == "" {
			name = f.Name
		}
		if r := rsAttr(f.Attrs, serde, "rename"); r != nil && r.Value != nil {
			name = r.Value.Text
		}
		put := func(in any) {
			x.names, x.fields = append(x.names, f.Name), append(x.fields, &rsCell{v: in})
		}
		if rsAttr(f.Attrs, serde, "flatten") != nil {
			in, bad, err := m.rsDecode(ft, v, texts, depth+1, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			put(in)
			continue
		}
		if rsAttr(f.Attrs, serde, "deserialize_with") != nil || rsAttr(f.Attrs, serde, "with") != nil {
			put(dontKnow("a field that is read in its own way"))
			continue
		}
		in := get(name)
		used[name] = true
		if a := rsAttr(f.Attrs, serde, "alias"); in == nil && a != nil && a.Value != nil {
			in = get(a.Value.Text)
			used[a.Value.Text] = true
		}
		if rsAttr(f.Attrs, serde, "skip") != nil || rsAttr(f.Attrs, serde, "skip_deserializing") != nil {
			in = nil
		}
		def := rsAttr(f.Attrs, serde, "default")
		switch {
		case in != nil:
			y, bad, err := m.rsDecode(ft, in, texts, depth+1, at)
			if bad != "" || err != nil {
				return nil, f.Name + ": " + bad, err
			}
			put(y)
		case def != nil && def.Value != nil:
			fn := strings.Split(def.Value.Text, "::")
			g, err := m.rsPath(&rust.Expr{Kind: rust.PathExpr, Path: fn}, &rsScope{vars: map[string]*rsCell{}, fr: fr}, nil)
			if err != nil {
				return nil, "", err
			}
			y, err := m.rsCall(g, nil, ft, at)
			if err != nil {
				return nil, "", err
			}
			put(rsTyped(y, ft))
		case def != nil:
			y, err := m.rsDefault(ft)
			if err != nil {
				return nil, "", err
			}
			put(y)
		case whole != nil && whole.field(f.Name) != nil:
			put(whole.field(f.Name).v)
		case ft.is("Option"):
			put(rsNone())
		default:
			return nil, "missing field `" + name + "`", nil
		}
	}
	if rsAttr(d.item.Attrs, serde, "deny_unknown_fields") != nil && !texts {
		for _, k := range v.Keys {
			if !used[k] {
				return nil, "unknown field `" + k + "`", nil
			}
		}
	}
	return x, "", nil
}

// rsEnvy reads a structure from the environment (envy 0.4): its fields by their names,
// in any case.
func (m *machine) rsEnvy(prefix string, t *rsT, at rsAt) (any, error) {
	if t == nil || t.def == nil {
		return nil, giveUp("what envy reads")
	}
	for _, f := range t.def.item.Fields { // they are asked for by name
		name := f.Name
		if r := rsAttr(f.Attrs, []string{"serde"}, "rename"); r != nil && r.Value != nil {
			name = r.Value.Text
		}
		if up := strings.ToUpper(prefix + name); up != "" {
			m.lookup(up, m.rsSpot(rsAt{t.def.mod.file, f.Off, f.Off + int32(len(f.Name))}))
		}
	}
	v := &value.Value{Kind: value.Object}
	for _, k := range m.envKeys() {
		if rest, ok := strings.CutPrefix(k, prefix); ok {
			v.Keys, v.Kids = append(v.Keys, strings.ToLower(rest)), append(v.Kids, value.Text(m.env.text(k), place.Span{}))
		}
	}
	return m.rsDecoded(t, v, true, at)
}

// rsJSONAt is what stands at a key.
func (m *machine) rsJSONAt(j *rsJSON, k any) any {
	if v := rsJSONGet(j.v, k); v != nil {
		return &rsJSON{v}
	}
	return &rsJSON{&value.Value{Kind: value.Null}}
}

func rsJSONGet(v *value.Value, k any) *value.Value {
	switch k := rsOpened(k).(type) {
	case string:
		if v.Kind == value.Object {
			return v.Get(k)
		}
	case rsInt:
		if v.Kind == value.List && k.n >= 0 && int(k.n) < len(v.Kids) {
			return v.Kids[k.n]
		}
	}
	return nil
}

func (m *machine) rsJSONItems(j *rsJSON) (*rsIter, error) {
	var l []any
	for i, k := range j.v.Kids {
		if j.v.Kind == value.Object {
			l = append(l, rsTupleOf(j.v.Keys[i], &rsJSON{k}))
		} else {
			l = append(l, &rsJSON{k})
		}
	}
	return rsOver(l), nil
}

func (m *machine) rsJSONMethod(j *rsJSON, name string, args []any, types []*rsT, want *rsT, at rsAt) (any, error) {
	v := j.v
	switch name {
	case "get":
		in := rsJSONGet(v, first(args))
		if in == nil {
			return rsNone(), nil
		}
		return rsSome(&rsJSON{in}), nil
	case "pointer":
		p, ok := rsOpened(first(args)).(string)
		if !ok {
			break
		}
		for _, k := range strings.Split(strings.TrimPrefix(p, "/"), "/") {
			var at any = k
			if i, err := strconv.Atoi(k); err == nil && v.Kind == value.List {
				at = rsInt{int64(i), "usize"}
			}
			if v = rsJSONGet(v, at); v == nil {
				return rsNone(), nil
			}
		}
		return rsSome(&rsJSON{v}), nil
	case "as_u64", "as_i64", "as_integer":
		t := map[string]string{"as_u64": "u64", "as_i64": "i64", "as_integer": "i64"}[name]
		ok := v.Kind == value.Num && v.Num == math.Trunc(v.Num) && (v.Num >= 0 || t == "i64")
		return rsMaybe(rsInt{int64(v.Num), t}, ok), nil
	case "as_f64", "as_float":
		return rsMaybe(v.Num, v.Kind == value.Num), nil
	case "as_str":
		return rsMaybe(v.Text, v.Kind == value.Str), nil
	case "as_bool":
		return rsMaybe(v.Num != 0, v.Kind == value.Bool), nil
	case "as_array", "as_object", "as_table", "as_mapping", "as_sequence":
		return rsMaybe(j, v.Kind == value.List || v.Kind == value.Object), nil
	case "is_null", "is_none":
		return v.Kind == value.Null, nil
	case "is_string", "is_str":
		return v.Kind == value.Str, nil
	case "is_number", "is_u64", "is_i64", "is_integer":
		return v.Kind == value.Num, nil
	case "is_object", "is_table":
		return v.Kind == value.Object, nil
	case "len":
		return rsInt{int64(len(v.Kids)), "usize"}, nil
	case "contains_key":
		return rsJSONGet(v, first(args)) != nil, nil
	case "try_into", "try_deserialize":
		return m.rsDecoded(rsFirstType(firstType(types), want.arg(0)), v, false, at)
	case "iter", "into_iter", "values", "keys":
		it, err := m.rsJSONItems(j)
		return it, err
	}
	return nil, giveUp("the method %s of a value that was read", name)
}

func firstType(types []*rsT) *rsT {
	if len(types) > 0 {
		return types[0]
	}
	return nil
}

// rsConfigMethod calls a method of crate config, or of envy's prefix.
func (m *machine) rsConfigMethod(x *rsData, name string, args []any, types []*rsT, want *rsT, at rsAt) (any, error) {
	if x.variant == "envy" {
		prefix, _ := x.fields[0].v.(string)
		return m.rsEnvy(prefix, rsFirstType(firstType(types), want.arg(0)), at)
	}
	if x.typ == "config::Source" {
		if f := x.field(name); f != nil {
			f.v = rsOpened(first(args))
		} else if name == "format" {
			return nil, giveUp("a file of settings in a form of its own")
		}
		return x, nil
	}
	sources := x.fields[0].v.(*rsList)
	switch name {
	case "add_source":
		sources.items = append(sources.items, &rsCell{v: first(args)})
		return x, nil
	case "set_default", "set_override":
		sources.items = append(sources.items, &rsCell{v: rsTupleOf(name, first(args), at2(args, 1))})
		return rsOk(x), nil
	case "merge":
		sources.items = append(sources.items, &rsCell{v: first(args)})
		return rsOk(x), nil
	case "build", "build_cloned":
		v, bad, err := m.rsConfigured(sources, at)
		switch {
		case err != nil:
			return nil, err
		case bad != "":
			return rsErr("ConfigError", bad), nil
		}
		return rsOk(&rsData{typ: "config::Builder", variant: "built", fields: []*rsCell{{v: &rsList{}}, {v: &rsJSON{v}}}}), nil
	case "try_deserialize", "try_into", "get", "get_string", "get_int", "get_bool":
		if x.variant != "built" {
			v, bad, err := m.rsConfigured(sources, at)
			if err != nil || bad != "" {
				return rsErr("ConfigError", bad), err
			}
			x = &rsData{typ: "config::Builder", variant: "built", fields: []*rsCell{{}, {v: &rsJSON{v}}}}
		}
		v := x.fields[1].v.(*rsJSON).v
		t := rsFirstType(firstType(types), want.arg(0))
		if strings.HasPrefix(name, "get") {
			key, ok := rsOpened(first(args)).(string)
			if !ok {
				return nil, undecided("a key that is not known")
			}
			for _, k := range strings.Split(strings.ToLower(key), ".") {
				if v = rsJSONGet(v, k); v == nil {
					return rsErr("ConfigError", "configuration property "+key+" not found"), nil
				}
			}
			switch name {
			case "get_string":
				t = &rsT{name: "String"}
			case "get_int":
				t = &rsT{name: "i64"}
			case "get_bool":
				t = &rsT{name: "bool"}
			}
		}
		if t == nil {
			return nil, giveUp("what settings are read into")
		}
		return m.rsDecoded(t, v, true, at)
	}
	return nil, giveUp("the method %s of settings", name)
}

// rsConfigured puts sources of settings together: a later one counts more.
func (m *machine) rsConfigured(sources *rsList, at rsAt) (*value.Value, string, error) {
	all := &value.Value{Kind: value.Object}
	var set func(v *value.Value, keys []string, x *value.Value)
	set = func(v *value.Value, keys []string, x *value.Value) {
		for i, k := range v.Keys {
			if k != keys[0] {
				continue
			}
			if len(keys) == 1 {
				if x.Kind == value.Object && v.Kids[i].Kind == value.Object {
					for j, in := range x.Keys {
						set(v.Kids[i], []string{in}, x.Kids[j])
					}
				} else {
					v.Kids[i] = x
				}
				return
			}
			if v.Kids[i].Kind != value.Object {
				v.Kids[i] = &value.Value{Kind: value.Object}
			}
			set(v.Kids[i], keys[1:], x)
			return
		}
		if len(keys) > 1 {
			in := &value.Value{Kind: value.Object}
			set(in, keys[1:], x)
			x = in
		}
		v.Keys, v.Kids = append(v.Keys, keys[0]), append(v.Kids, x)
	}
	var last []func()
	for _, c := range sources.items {
		switch src := rsOpened(c.v).(type) {
		case *rsList:
			key, ok := rsOpened(src.items[1].v).(string)
			if !ok {
				return nil, "", undecided("a key that is not known")
			}
			v := toValue(src.items[2].v, m.rsSpot(at))
			do := func() { set(all, strings.Split(strings.ToLower(key), "."), v) }
			if src.items[0].v == any("set_override") {
				last = append(last, do)
			} else {
				do()
			}
		case *rsData:
			of, _ := rsOpened(src.fields[0].v).(string)
			if strings.HasPrefix(src.variant, "Environment") {
				sep, _ := rsOpened(src.fields[1].v).(string)
				ps, _ := rsOpened(src.fields[2].v).(string)
				if ps == "" {
					if ps = sep; ps == "" || m.rsOldConfig() {
						ps = "_"
					}
				}
				prefix := ""
				if of != "" {
					prefix = strings.ToLower(of + ps)
				}
				for _, k := range m.envKeys() {
					if rest, ok := strings.CutPrefix(strings.ToLower(k), prefix); ok && rest != "" {
						keys := []string{rest}
						if sep != "" {
							keys = strings.Split(rest, strings.ToLower(sep))
						}
						set(all, keys, value.Text(m.env.text(k), place.Span{}))
					}
				}
				continue
			}
			var d *document.Node
			for _, ext := range []string{"", ".toml", ".json", ".yaml", ".yml", ".ini", ".json5", ".ron"} {
				if p, ok := m.treePath(of + ext); ok && d == nil && path.Ext(of+ext) != "" {
					d = m.e.Loader.Data(p)
				}
			}
			if d == nil {
				if rsOpened(src.fields[3].v) == any(false) {
					continue
				}
				return nil, "configuration file \"" + of + "\" not found", nil
			}
			v := value.FromDocument(d)
			for i, k := range v.Keys {
				set(all, []string{strings.ToLower(k)}, v.Kids[i])
			}
		default:
			return nil, "", undecided("a source of settings")
		}
	}
	for _, do := range last {
		do()
	}
	return all, "", nil
}

// rsOldConfig reports whether crate config is one before 0.12, which puts _ behind a
// prefix whatever separates the rest (its change log, 0.12).
func (m *machine) rsOldConfig() bool {
	d := m.e.Loader.Data(path.Join(m.rsFolder(), "Cargo.toml")).Get("dependencies", "config")
	v, ok := d.Scalar()
	if !ok {
		v, _ = d.Get("version").Scalar()
	}
	parts := strings.Split(strings.TrimLeft(v, "^=~"), ".")
	if len(parts) < 2 || parts[0] != "0" {
		return false
	}
	n, err := strconv.Atoi(parts[1])
	return err == nil && n < 12
}

// rsOpt is an argument of the command line.
type rsOpt struct {
	id          string
	long, short []string
	env         string
	def         any // as text, or a value
	hasDef      bool
	t           *rsT
	flag, many  bool
	counts      bool // how often it is given
	optional    bool
	place       bool
	lo, hi      *rsInt
	got         []any
	given       bool
	off         int32
	mod         *rsModule
	global      bool
}

// rsPart is what a field of a structure is filled with: an argument, others in it, or a
// command.
type rsPart struct {
	name string
	opt  *rsOpt
	in   *rsSpec
	sub  *rsDef
	may  bool // there may be none
	dflt bool
}

type rsSpec struct {
	def   *rsDef
	parts []rsPart
	verb  any
}

var clapAttrs = []string{"arg", "clap", "structopt", "command", "argh"}

// rsClapSpec is what a structure says of the command line (clap 4, "Derive Reference").
func (m *machine) rsClapSpec(def *rsDef, fields []rust.Field, depth int) (*rsSpec, error) {
	if depth > 20 {
		return nil, spent("nested too deep")
	}
	spec := &rsSpec{def: def}
	fr := &rsFrame{mod: def.mod, self: def}
	style := ""
	for _, a := range def.item.Attrs {
		if slices.Contains(clapAttrs, a.Path) {
			if x := a.Arg("rename_all"); x != nil && x.Value != nil {
				style = x.Value.Text
			}
		}
	}
	for _, f := range fields {
		t := m.rsType(f.Type, fr)
		part := rsPart{name: f.Name}
		inner := t
		optional := t.is("Option")
		if optional {
			inner = t.arg(0)
		}
		switch {
		case rsAttr(f.Attrs, clapAttrs, "flatten") != nil && inner != nil && inner.def != nil:
			in, err := m.rsClapSpec(inner.def, inner.def.item.Fields, depth+1)
			if err != nil {
				return nil, err
			}
			part.in = in
		case rsAttr(f.Attrs, clapAttrs, "subcommand") != nil && inner != nil && inner.def != nil:
			part.sub, part.may = inner.def, optional
		case rsAttr(f.Attrs, clapAttrs, "skip") != nil:
			part.dflt = true
		default:
			o := &rsOpt{id: f.Name, t: inner, optional: optional, off: f.Off, mod: def.mod}
			kebab := rsStyled(f.Name, firstOf(style, "kebab-case"))
			if a := rsAttr(f.Attrs, clapAttrs, "long"); a != nil {
				if a.Value != nil {
					kebab = a.Value.Text
				}
				o.long = []string{kebab}
			}
			if a := rsAttr(f.Attrs, clapAttrs, "alias"); a != nil && a.Value != nil {
				o.long = append(o.long, a.Value.Text)
			}
			if a := rsAttr(f.Attrs, clapAttrs, "visible_alias"); a != nil && a.Value != nil {
				o.long = append(o.long, a.Value.Text)
			}
			if a := rsAttr(f.Attrs, clapAttrs, "short"); a != nil {
				short := f.Name[:1]
				if a.Value != nil {
					short = a.Value.Text
				}
				o.short = []string{short}
			}
			if a := rsAttr(f.Attrs, clapAttrs, "env"); a != nil {
				o.env = rsStyled(f.Name, "SCREAMING_SNAKE_CASE")
				if a.Value != nil {
					v, err := m.rsEval(a.Value, &rsScope{vars: map[string]*rsCell{}, fr: fr}, nil)
					if err != nil {
						return nil, err
					}
					o.env, _ = rsOpened(v).(string)
				}
			}
			for _, key := range []string{"default_value", "default_value_t"} {
				if a := rsAttr(f.Attrs, clapAttrs, key); a != nil {
					v, err := any(nil), error(nil)
					if a.Value == nil {
						v, err = m.rsDefault(inner)
					} else {
						to := inner
						if key == "default_value" {
							to = nil
						}
						v, err = m.rsEval(a.Value, &rsScope{vars: map[string]*rsCell{}, fr: fr}, to)
						if _, isText := rsOpened(v).(string); key == "default_value_t" && !isText {
							v = rsTyped(v, inner)
						}
						if fn, ok := v.(*rsFn); ok {
							v, err = m.rsCall(fn, nil, inner, rsAt{f: def.mod.file})
						}
					}
					if err != nil {
						return nil, err
					}
					o.def, o.hasDef = v, true
				}
			}
			if a := rsAttr(f.Attrs, clapAttrs, "value_parser"); a != nil && a.Value != nil {
				v, err := m.rsEval(a.Value, &rsScope{vars: map[string]*rsCell{}, fr: fr}, nil)
				if err == nil {
					o.bounds(v)
				}
			}
			o.global = rsAttr(f.Attrs, clapAttrs, "global") != nil
			o.flag = inner.is("bool") && (len(o.long) > 0 || len(o.short) > 0)
			if a := rsAttr(f.Attrs, clapAttrs, "action"); a != nil && a.Value != nil && len(a.Value.Path) > 0 {
				o.acts(a.Value.Path[len(a.Value.Path)-1])
			}
			if rsAttr(f.Attrs, clapAttrs, "num_args") != nil && inner.is("bool") {
				return nil, giveUp("an argument of its own form")
			}
			if inner.is("Vec") {
				o.many, o.t = true, inner.arg(0)
			}
			o.place = len(o.long) == 0 && len(o.short) == 0
			part.opt = o
		}
		spec.parts = append(spec.parts, part)
	}
	return spec, nil
}

// acts takes what is done when it is given (clap 4, "ArgAction").
func (o *rsOpt) acts(how string) {
	switch how {
	case "Set":
		o.flag = false
	case "SetTrue":
		o.flag = true
	case "Count":
		o.flag, o.counts = true, true
	case "Append":
		o.many = true
	}
}

// bounds takes the range of value_parser!(u16).range(1..).
func (o *rsOpt) bounds(v any) {
	d, ok := v.(*rsData)
	if !ok || d.typ != "value_parser" || len(d.fields) == 0 {
		return
	}
	if r, ok := d.fields[0].v.(*rsData); ok && r.typ == "Range" {
		if lo, ok := r.fields[0].v.(rsInt); ok {
			o.lo = &lo
		}
		if hi, ok := r.fields[1].v.(rsInt); ok {
			if r.variant == ".." {
				hi.n--
			}
			o.hi = &hi
		}
	}
}

func (s *rsSpec) options() (list []*rsOpt) {
	for _, p := range s.parts {
		if p.opt != nil {
			list = append(list, p.opt)
		}
		if p.in != nil {
			list = append(list, p.in.options()...)
		}
	}
	return list
}

func (s *rsSpec) command() *rsPart {
	for i := range s.parts {
		if s.parts[i].sub != nil {
			return &s.parts[i]
		}
		if s.parts[i].in != nil {
			if c := s.parts[i].in.command(); c != nil {
				return c
			}
		}
	}
	return nil
}

// rsClap reads the command line into a structure; one that does not fit ends the program.
func (m *machine) rsClap(def *rsDef, how string, args []any, at rsAt) (any, error) {
	words := m.argv()[1:]
	if how == "parse_from" && len(args) > 0 {
		it, err := m.rsIterate(args[0], at)
		if err != nil || it == nil {
			return nil, undecided("the command line")
		}
		l, err := m.rsRest(it)
		if err != nil {
			return nil, err
		}
		words = l[min(1, len(l)):]
	}
	var v any
	var bad string
	var err error
	if def.item.Kind == rust.EnumItem { // the commands themselves
		v, bad, err = m.rsClapVerb(def, words, nil, at)
	} else {
		spec, problem := m.rsClapSpec(def, def.item.Fields, 0)
		if problem != nil {
			return nil, problem
		}
		v, bad, err = m.rsClapRead(spec, words, nil, at)
	}
	switch {
	case err != nil:
		return nil, err
	case how == "try_parse" && bad != "":
		return rsErr("clap::Error", bad), nil
	case how == "try_parse":
		return rsOk(v), nil
	case bad != "":
		return nil, &exit{}
	}
	return v, nil
}

func (m *machine) rsClapRead(spec *rsSpec, words []any, more []*rsOpt, at rsAt) (any, string, error) {
	opts := spec.options()
	all := append(slices.Clone(opts), more...)
	var globals []*rsOpt
	for _, o := range all {
		if o.global {
			globals = append(globals, o)
		}
	}
	sub := spec.command()
	rest, verb, bad, err := rsMatchWords(all, words, sub != nil)
	if bad != "" || err != nil {
		return nil, bad, err
	}
	var chosen any
	switch {
	case sub == nil:
	case verb == "" && sub.may:
		chosen = rsNone()
	case verb == "":
		return nil, "a command is missing", nil
	default:
		if chosen, bad, err = m.rsClapVerb(sub.sub, append([]any{verb}, rest...), globals, at); bad != "" || err != nil {
			return nil, bad, err
		}
		if sub.may {
			chosen = rsSome(chosen)
		}
	}
	return m.rsClapMake(spec, chosen, at)
}

// rsMatchWords gives arguments their values; with verbs it ends at the first word that
// is no option.
func rsMatchWords(opts []*rsOpt, words []any, verbs bool) (rest []any, verb, bad string, err error) {
	byName := func(name string, long bool) *rsOpt {
		for _, o := range opts {
			if long && slices.Contains(o.long, name) || !long && slices.Contains(o.short, name) {
				return o
			}
		}
		return nil
	}
	places := 0
	plain := false
	for i := 0; i < len(words); i++ {
		w, ok := rsOpened(words[i]).(string)
		if !ok {
			return nil, "", "", undecided("the command line")
		}
		take := func(o *rsOpt, v string, has bool) string {
			if o.given = true; o.flag {
				if has {
					return "a value that is not asked for"
				}
				o.got = append(o.got, true)
				return ""
			}
			if !has {
				if i++; i >= len(words) {
					return "a value is missing"
				}
				o.got = append(o.got, words[i])
				return ""
			}
			o.got = append(o.got, v)
			return ""
		}
		switch {
		case plain, w == "-", !strings.HasPrefix(w, "-"):
			if verbs && !plain {
				return words[i+1:], w, "", nil
			}
			n := 0
			var to *rsOpt
			for _, o := range opts {
				if o.place {
					if n == places || o.many && n < places {
						to = o
					}
					n++
				}
			}
			if to == nil {
				return nil, "", "unexpected argument " + w, nil
			}
			places++
			to.got, to.given = append(to.got, w), true
		case w == "--":
			plain = true
		case strings.HasPrefix(w, "--"):
			name, v, has := strings.Cut(w[2:], "=")
			o := byName(name, true)
			if o == nil {
				return nil, "", "unexpected argument " + w, nil
			}
			if bad := take(o, v, has); bad != "" {
				return nil, "", bad, nil
			}
		default:
			for j := 1; j < len(w); j++ {
				o := byName(w[j:j+1], false)
				if o == nil {
					return nil, "", "unexpected argument " + w, nil
				}
				if o.flag {
					o.given, o.got = true, append(o.got, true)
					continue
				}
				v := strings.TrimPrefix(w[j+1:], "=")
				if bad := take(o, v, j+1 < len(w)); bad != "" {
					return nil, "", bad, nil
				}
				break
			}
		}
	}
	return nil, "", "", nil
}

func (m *machine) rsClapVerb(def *rsDef, words []any, globals []*rsOpt, at rsAt) (any, string, error) {
	if len(words) == 0 {
		return nil, "a command is missing", nil
	}
	w, ok := rsOpened(words[0]).(string)
	if !ok {
		return nil, "", undecided("the command line")
	}
	for i := range def.item.Variants {
		v := &def.item.Variants[i]
		names := []string{rsStyled(v.Name, "kebab-case")}
		for _, key := range []string{"name", "alias", "visible_alias"} {
			if a := rsAttr(v.Attrs, clapAttrs, key); a != nil && a.Value != nil {
				names = append(names, a.Value.Text)
			}
		}
		if !slices.Contains(names, w) {
			continue
		}
		x := &rsData{def: def, typ: def.name, variant: v.Name}
		switch {
		case len(v.Fields) == 0:
			if len(words) > 1 {
				if _, _, bad, err := rsMatchWords(globals, words[1:], false); bad != "" || err != nil {
					return nil, bad, err
				}
			}
		case v.Tuple:
			t := m.rsType(v.Fields[0].Type, &rsFrame{mod: def.mod, self: def})
			if t == nil || t.def == nil {
				return nil, "", giveUp("the command %s", w)
			}
			spec, err := m.rsClapSpec(t.def, t.def.item.Fields, 0)
			if err != nil {
				return nil, "", err
			}
			in, bad, err := m.rsClapRead(spec, words[1:], globals, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			x.fields = []*rsCell{{v: in}}
		default:
			spec, err := m.rsClapSpec(def, v.Fields, 0)
			if err != nil {
				return nil, "", err
			}
			in, bad, err := m.rsClapRead(spec, words[1:], globals, at)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			d := in.(*rsData)
			x.names, x.fields = d.names, d.fields
		}
		return x, "", nil
	}
	return nil, "unrecognized subcommand " + w, nil
}

func (m *machine) rsClapMake(spec *rsSpec, chosen any, at rsAt) (any, string, error) {
	x := &rsData{def: spec.def, typ: spec.def.name}
	for _, p := range spec.parts {
		var v any
		var bad string
		var err error
		switch {
		case p.opt != nil:
			v, bad, err = m.rsOptValue(p.opt, at)
		case p.in != nil:
			v, bad, err = m.rsClapMake(p.in, chosen, at)
		case p.sub != nil:
			v = chosen
		default:
			for _, f := range spec.def.item.Fields {
				if f.Name == p.name {
					v, err = m.rsDefault(m.rsType(f.Type, &rsFrame{mod: spec.def.mod, self: spec.def}))
				}
			}
		}
		if bad != "" || err != nil {
			return nil, bad, err
		}
		x.names, x.fields = append(x.names, p.name), append(x.fields, &rsCell{v: v})
	}
	return x, "", nil
}

// rsOptValue is the value of an argument: what is given, its variable, its default.
func (m *machine) rsOptValue(o *rsOpt, at rsAt) (any, string, error) {
	if o.counts {
		return rsTyped(rsInt{int64(len(o.got)), ""}, o.t), "", nil
	}
	if o.flag {
		if o.given {
			return true, "", nil
		}
		if o.env != "" {
			if v, ok := m.lookup(o.env, m.rsSpot(rsAt{o.mod.file, o.off, o.off + int32(len(o.id))})); ok {
				switch strings.ToLower(v) { // clap 4, "FalseyValueParser"
				case "", "n", "no", "f", "false", "off", "0":
					return false, "", nil
				}
				return true, "", nil
			}
		}
		if b, ok := rsOpened(o.def).(bool); ok {
			return b, "", nil
		}
		return false, "", nil
	}
	one := func(v any) (any, string, error) {
		t, ok := rsOpened(v).(string)
		if !ok {
			if x, isOpaque := rsOpened(v).(*opaque); isOpaque {
				return nil, "", undecided("%s", x)
			}
			return v, "", nil
		}
		x, bad, err := m.rsOptParse(o, t, at)
		return x, bad, err
	}
	got := o.got
	if !o.given && o.env != "" {
		if v, ok := m.lookup(o.env, m.rsSpot(rsAt{o.mod.file, o.off, o.off + int32(len(o.id))})); ok {
			got = []any{v}
		}
	}
	if len(got) == 0 && o.hasDef {
		got = []any{o.def}
	}
	if o.many {
		l := &rsList{}
		for _, g := range got {
			v, bad, err := one(g)
			if bad != "" || err != nil {
				return nil, bad, err
			}
			l.items = append(l.items, &rsCell{v: v})
		}
		if o.optional {
			return rsMaybe(l, len(got) > 0), "", nil
		}
		return l, "", nil
	}
	if len(got) == 0 {
		if o.optional {
			return rsNone(), "", nil
		}
		return nil, "the argument " + o.id + " is missing", nil
	}
	if len(got) > 1 {
		return nil, "the argument " + o.id + " is given twice", nil
	}
	v, bad, err := one(got[0])
	if o.optional {
		v = rsSome(v)
	}
	return v, bad, err
}

func (m *machine) rsOptParse(o *rsOpt, text string, at rsAt) (any, string, error) {
	t := o.t
	if t == nil {
		t = &rsT{name: "String"}
	}
	if t.def != nil && t.def.traits["ValueEnum"] || t.def != nil && t.def.traits["ArgEnum"] {
		for _, va := range t.def.item.Variants {
			names := []string{rsStyled(va.Name, "kebab-case")}
			for _, key := range []string{"name", "alias"} {
				if a := rsAttr(va.Attrs, []string{"value", "clap"}, key); a != nil && a.Value != nil {
					names = append(names, a.Value.Text)
				}
			}
			if slices.Contains(names, text) {
				return &rsData{def: t.def, typ: t.def.name, variant: va.Name}, "", nil
			}
		}
		return nil, "invalid value " + text, nil
	}
	r, err := m.rsParse(text, t, at)
	if err != nil {
		return nil, "", err
	}
	d, ok := rsBare(r).(*rsData)
	if !ok {
		return nil, "", undecided("the argument %s", o.id)
	}
	in, well := d.holding()
	if !well {
		return nil, "invalid value for " + o.id, nil
	}
	if n, ok := in.(rsInt); ok && (o.lo != nil && n.n < o.lo.n || o.hi != nil && n.n > o.hi.n) {
		return nil, "a value of " + o.id + " out of range", nil
	}
	return in, "", nil
}

// rsClapNew makes a command or an argument of clap's builder (clap 4, "Builder API").
func (m *machine) rsClapNew(of string, name any) any {
	id, _ := rsOpened(name).(string)
	if of == "Arg" {
		return &rsData{typ: "clap::Arg", variant: id, fields: []*rsCell{{v: &rsHolderOpt{&rsOpt{id: id, place: true, mod: m.rs().files[m.main.Name]}}}}}
	}
	return &rsData{typ: "clap::Command", variant: id, fields: []*rsCell{{v: &rsList{}}, {v: &rsList{}}}}
}

// rsHolderOpt keeps an argument in a value.
type rsHolderOpt struct{ opt *rsOpt }

func (m *machine) rsClapMethod(x *rsData, name string, args []any, types []*rsT, at rsAt) (any, error) {
	arg := rsOpened(first(args))
	text, isText := arg.(string)
	if ch, ok := arg.(character); ok {
		text, isText = string(rune(ch)), true
	}
	switch x.typ {
	case "clap::Arg":
		o := x.fields[0].v.(*rsHolderOpt).opt
		switch name {
		case "long":
			o.long, o.place = append(o.long, text), false
		case "short":
			o.short, o.place = append(o.short, text), false
		case "alias", "visible_alias":
			o.long = append(o.long, text)
		case "env":
			o.env = text
		case "default_value":
			o.def, o.hasDef = arg, true
		case "required", "takes_value", "index", "num_args", "number_of_values", "multiple_values":
			if yes, ok := arg.(bool); ok && name == "takes_value" && !yes {
				o.flag = true
			}
		case "action":
			how := ""
			if d, ok := arg.(*opaque); ok {
				how = d.path
			} else if f, ok := arg.(*rsFn); ok {
				how = f.name
			}
			o.acts(how[strings.LastIndexByte(how, '.')+1:])
		case "value_parser":
			if d, ok := arg.(*rsData); ok && d.typ == "value_parser" {
				o.t = &rsT{name: d.variant}
				o.bounds(d)
			}
		case "help", "value_name", "about", "long_help", "global", "hide", "hide_env_values", "value_hint", "conflicts_with", "display_order", "help_heading":
		default:
			if !isText && len(args) > 0 {
				return nil, giveUp("the method %s of an argument", name)
			}
		}
		return x, nil
	case "clap::Command":
		switch name {
		case "arg":
			x.fields[0].v.(*rsList).items = append(x.fields[0].v.(*rsList).items, &rsCell{v: arg})
			return x, nil
		case "args":
			it, err := m.rsIterate(arg, at)
			if err != nil || it == nil {
				return nil, undecided("the arguments of a command")
			}
			l, err := m.rsRest(it)
			for _, a := range l {
				x.fields[0].v.(*rsList).items = append(x.fields[0].v.(*rsList).items, &rsCell{v: rsOpened(a)})
			}
			return x, err
		case "subcommand":
			x.fields[1].v.(*rsList).items = append(x.fields[1].v.(*rsList).items, &rsCell{v: arg})
			return x, nil
		case "get_matches", "try_get_matches":
			mt, bad, err := m.rsClapMatch(x, m.argv()[1:])
			switch {
			case err != nil:
				return nil, err
			case bad != "" && name == "get_matches":
				return nil, &exit{}
			case bad != "":
				return rsErr("clap::Error", bad), nil
			case name == "get_matches":
				return mt, nil
			}
			return rsOk(mt), nil
		}
		return x, nil
	}
	// What was matched.
	for _, c := range x.fields[0].v.(*rsList).items {
		o := c.v.(*rsHolderOpt).opt
		if o.id != text || !isText {
			continue
		}
		switch name {
		case "get_flag":
			v, _, err := m.rsOptValue(o, at)
			return v, err
		case "contains_id", "is_present":
			return o.given || o.hasDef && name == "contains_id", nil
		case "get_one", "value_of", "get_many", "values_of", "remove_one", "try_get_one":
			if o.t == nil && len(types) > 0 && types[0] != nil && types[0].name != "String" {
				o.t = types[0]
			}
			w := *o
			w.optional = true
			v, bad, err := m.rsOptValue(&w, at)
			if bad != "" {
				return nil, &exit{}
			}
			return v, err
		}
	}
	switch name {
	case "subcommand":
		verb, in := x.fields[1].v, x.fields[2].v
		if verb == nil {
			return rsNone(), nil
		}
		return rsSome(rsTupleOf(verb, in)), nil
	case "subcommand_matches":
		if x.fields[1].v == any(text) {
			return rsSome(x.fields[2].v), nil
		}
		return rsNone(), nil
	case "subcommand_name":
		return rsMaybe(x.fields[1].v, x.fields[1].v != nil), nil
	}
	return nil, giveUp("the method %s of what was matched", name)
}

func (m *machine) rsClapMatch(cmd *rsData, words []any) (*rsData, string, error) {
	var opts []*rsOpt
	held := &rsList{}
	for _, c := range cmd.fields[0].v.(*rsList).items {
		d, ok := rsBare(c.v).(*rsData)
		if !ok || d.typ != "clap::Arg" {
			return nil, "", giveUp("an argument of a command")
		}
		h := d.fields[0].v.(*rsHolderOpt)
		opts = append(opts, h.opt)
		held.items = append(held.items, &rsCell{v: h})
	}
	subs := cmd.fields[1].v.(*rsList).items
	rest, verb, bad, err := rsMatchWords(opts, words, len(subs) > 0)
	if bad != "" || err != nil {
		return nil, bad, err
	}
	mt := &rsData{typ: "clap::Matches", fields: []*rsCell{{v: held}, {}, {}}}
	if verb != "" {
		for _, c := range subs {
			if d, ok := rsBare(c.v).(*rsData); ok && d.variant == verb {
				in, bad, err := m.rsClapMatch(d, rest)
				if bad != "" || err != nil {
					return nil, bad, err
				}
				mt.fields[1].v, mt.fields[2].v = verb, in
				return mt, "", nil
			}
		}
		return nil, "unrecognized subcommand " + verb, nil
	}
	return mt, "", nil
}
