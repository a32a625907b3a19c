package trace

import (
	"math"
	"net/netip"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// What pydantic makes of models and of settings (pydantic 1.10 and 2.11, "Models",
// "Fields", "Validators"; pydantic-settings 2, "Settings management").

// pdModel tells whether objects of a class are models, and whether they are settings
// that the environment fills; second says that it is pydantic 2.
func pdModel(c *class) (model, settings, second bool) {
	base := outer(c)
	if base == nil {
		return false, false, false
	}
	switch base.path {
	case "pydantic_settings.BaseSettings":
		return true, true, true
	case "pydantic.BaseSettings", "pydantic.v1.BaseSettings", "pydantic.env_settings.BaseSettings":
		return true, true, false
	case "pydantic.BaseModel", "pydantic.main.BaseModel", "pydantic.v1.BaseModel":
		second = pdSecond(c)
		return true, false, second
	}
	return false, false, false
}

// pdSecond guesses the version from what the file of a class takes in.
func pdSecond(c *class) bool {
	for _, x := range c.scope.module.top.vars {
		if o, ok := x.v.(*opaque); ok {
			switch {
			case strings.HasPrefix(o.path, "pydantic_settings."), strings.HasSuffix(o.path, ".field_validator"), strings.HasSuffix(o.path, ".model_validator"), strings.HasSuffix(o.path, ".ConfigDict"):
				return true
			}
		}
	}
	return false
}

// pdField is a field of a model.
type pdField struct {
	name  string
	of    *class
	node  *code.Node
	def   any // what it has where nothing is given
	has   bool
	limit map[string]any // what Field says
}

func (m *machine) pdFields(c *class) ([]pdField, error) {
	var list []pdField
	for _, x := range slices.Backward(c.line()) {
		for i := range list { // another default, without its type
			if d, ok := x.statics.get(list[i].name); ok {
				list[i].def, list[i].has = d, true
			}
		}
		for _, n := range x.fields {
			name := n.Kid(0).Name
			if name == "" || strings.HasPrefix(name, "_") || name == "model_config" || strings.Contains(x.scope.module.file.Text(n), "ClassVar") {
				continue
			}
			f := pdField{name: name, of: x, node: n, limit: map[string]any{}}
			if d, ok := x.statics.get(name); ok {
				f.def, f.has = d, true
				if o, ok := d.(*opaque); ok && pdIsField(o) {
					f.has = false
					f.take(m, o, true)
				}
			}
			if more := n.Kid(2); more.Is(code.Call) {
				v, err := m.eval(more, x.scope)
				if err != nil {
					return nil, err
				}
				if o, ok := v.(*opaque); ok && pdIsField(o) {
					f.take(m, o, false)
				}
			}
			if i := slices.IndexFunc(list, func(p pdField) bool { return p.name == name }); i >= 0 {
				list[i] = f
				continue
			}
			list = append(list, f)
		}
	}
	return list, nil
}

func pdIsField(o *opaque) bool {
	return strings.HasPrefix(o.path, "pydantic") && strings.HasSuffix(o.path, ".Field()")
}

func (f *pdField) take(m *machine, o *opaque, first bool) {
	for k, v := range o.keys {
		f.limit[k] = v
	}
	ellipsis := func(v any) bool { x, ok := v.(*opaque); return ok && (x.path == "..." || x.path == "Ellipsis") }
	if len(o.args) > 0 && first && !ellipsis(o.args[0]) && !f.has {
		f.def, f.has = o.args[0], true
	}
	if d, ok := o.keys["default"]; ok && !f.has && !ellipsis(d) {
		f.def, f.has = d, true
	}
	if _, ok := o.keys["default_factory"]; ok && !f.has {
		f.has = true
	}
}

// pdSettings is what a class of settings says of itself.
type pdSettings struct {
	prefix, nested string
	fold, strict   bool
	files          []any
	empty          bool // empty variables count as unset
	known          bool
}

func (m *machine) pdConfig(c *class, keys map[string]any, second bool) pdSettings {
	s := pdSettings{fold: true, known: true, strict: second}
	take := func(k string, v any) {
		if !known(v) {
			s.known = s.known && !slices.Contains([]string{"env_prefix", "env_nested_delimiter", "case_sensitive", "env_file"}, k)
			return
		}
		switch k {
		case "env_prefix":
			s.prefix = show(v)
		case "env_nested_delimiter":
			if v != nil {
				s.nested = show(v)
			}
		case "case_sensitive":
			s.fold = v != true
		case "env_ignore_empty":
			s.empty = v == true
		case "extra":
			if t, ok := v.(string); ok {
				s.strict = second && t == "forbid"
			} else {
				s.strict = false
			}
		case "env_file":
			switch f := v.(type) {
			case nil:
				s.files = nil
			case *list:
				s.files = f.items
			default:
				s.files = []any{v}
			}
		case "secrets_dir", "cli_parse_args", "env_parse_none_str", "fields", "alias_generator":
			if v != nil && v != false {
				s.known = false
			}
		}
	}
	for _, x := range slices.Backward(c.line()) {
		if v, ok := x.statics.get("model_config"); ok {
			switch v := v.(type) {
			case *opaque:
				for _, k := range sortedKeys(v.keys) {
					take(k, v.keys[k])
				}
			case *object:
				for _, k := range v.keys {
					take(k, v.cells[k].v)
				}
			}
		}
		if v, ok := x.statics.get("Config"); ok {
			if in, ok := v.(*class); ok {
				for _, y := range slices.Backward(in.line()) {
					for _, k := range y.statics.keys {
						take(k, y.statics.cells[k].v)
					}
				}
				if _, own := classKey(in, "customise_sources", true); own {
					s.known = false
				}
				if _, own := classKey(in, "parse_env_var", true); own {
					s.known = false
				}
			}
		}
		for _, own := range []string{"settings_customise_sources", "customise_sources"} {
			if _, there := classKey(x, own, true); there {
				s.known = false
			}
			if _, there := classKey(x, own, false); there {
				s.known = false
			}
		}
	}
	for k, v := range keys {
		if name, ok := strings.CutPrefix(k, "_"); ok && (strings.HasPrefix(name, "env") || name == "case_sensitive" || name == "secrets_dir") {
			take(name, v)
		}
	}
	return s
}

// pdNames are the names of the variables of a field.
func (f *pdField) pdNames(s pdSettings, second bool) []string {
	given := func(v any) []string {
		switch x := v.(type) {
		case string:
			return []string{x}
		case *list:
			var l []string
			for _, y := range x.items {
				if t, ok := y.(string); ok {
					l = append(l, t)
				}
			}
			return l
		case *opaque: // AliasChoices
			var l []string
			for _, y := range x.args {
				if t, ok := y.(string); ok && strings.HasSuffix(x.path, "AliasChoices()") {
					l = append(l, t)
				}
			}
			return l
		}
		return nil
	}
	if second {
		for _, k := range []string{"validation_alias", "alias"} {
			if l := given(f.limit[k]); len(l) > 0 {
				return l
			}
		}
		return []string{s.prefix + f.name}
	}
	if l := given(f.limit["env"]); len(l) > 0 {
		return l
	}
	return []string{s.prefix + f.name}
}

// pdVariable is a variable of the environment under a name.
func (m *machine) pdVariable(name string, s pdSettings, at spot) (string, bool) {
	if s.fold {
		for _, k := range m.envKeys() {
			if strings.EqualFold(k, name) {
				t, ok := m.lookup(k, at)
				return t, ok && !(s.empty && t == "")
			}
		}
		name = strings.ToUpper(name)
	}
	t, ok := m.lookup(name, at)
	return t, ok && !(s.empty && t == "")
}

// pdBuild makes a model; done is false where the class is none.
func (m *machine) pdBuild(c *class, o *object, args []any, keys map[string]any, at spot) (done bool, err error) {
	model, settings, second := pdModel(c)
	if !model || len(args) > 0 {
		return false, nil
	}
	fields, err := m.pdFields(c)
	if err != nil {
		return true, err
	}
	given := map[string]any{}
	for _, f := range fields {
		if v, ok := keys[f.name]; ok {
			given[f.name] = v
		}
		for _, k := range []string{"alias", "validation_alias"} {
			if a, ok := f.limit[k].(string); ok {
				if v, ok := keys[a]; ok {
					given[f.name] = v
				} else if !settings {
					delete(given, f.name)
				}
			}
		}
	}
	if settings {
		s := m.pdConfig(c, keys, second)
		if !s.known {
			for _, f := range fields {
				if _, ok := given[f.name]; !ok {
					o.set(f.name, dontKnow("the setting "+f.name))
				}
			}
			return true, nil
		}
		if err := m.pdSources(c, fields, s, second, given, at); err != nil {
			return true, err
		}
	}
	if err := m.pdHooks(c, true, nil, given, o, at); err != nil {
		return true, err
	}
	values := newObject()
	values.dict = true
	for _, f := range fields {
		v, has := given[f.name]
		check := has
		if !has {
			if v, has = f.def, f.has; !has && !second && f.optional() { // pydantic 1 takes None for it
				v, has = nil, true
			}
			if fn, ok := f.limit["default_factory"]; ok && f.def == nil && has {
				if v, err = m.call(fn, undefined, nil, nil, at); err != nil {
					return true, err
				}
			}
			check = settings
		}
		if !has {
			return true, m.pdFails(f.name + " is required")
		}
		if check {
			if v, err = m.pdChecked(c, f, v, values, o, second, at); err != nil {
				return true, err
			}
		} else if v, err = m.pdHooked(c, f, v, values, o, false, true, at); err != nil {
			return true, err
		} else {
			v = pdOwn(m, v)
		}
		o.set(f.name, v)
		values.set(f.name, v)
	}
	if err := m.pdHooks(c, false, values, nil, o, at); err != nil {
		return true, err
	}
	if f := m.method(o, "model_post_init"); f != nil {
		if _, err := m.call(f, o, []any{nil}, nil, at); err != nil {
			return true, err
		}
	}
	return true, nil
}

// pdOwn is a default that each object has for itself.
func pdOwn(m *machine, v any) any {
	switch v.(type) {
	case *list:
		return m.copied(v)
	}
	return v
}

func (m *machine) pdFails(why string) error { return raise("ValidationError", why) }

func (f *pdField) optional() bool {
	t := f.typeText()
	return strings.HasPrefix(t, "Optional") || strings.HasPrefix(t, "typing.Optional") || strings.Contains(t, "None")
}

func (f *pdField) typeText() string {
	file := f.of.scope.module.file
	text := file.Text(f.node)
	_, t, ok := strings.Cut(text, ":")
	if !ok {
		return ""
	}
	depth := 0
	for i, r := range t {
		switch r {
		case '[', '(':
			depth++
		case ']', ')':
			depth--
		case '=':
			if depth == 0 {
				return strings.TrimSpace(t[:i])
			}
		}
	}
	return strings.TrimSpace(t)
}

// pdType reads the type of a field.
func pdType(text string) *code.Node {
	f := code.ReadAs(code.Python, "type.py", []byte(text), place.NewLines([]byte(text)))
	if f.Body == nil || len(f.Body.Kids) != 1 || !f.Body.Kids[0].Is(code.ExprStmt) {
		return nil
	}
	return f.Body.Kids[0].Kid(0)
}

// pdSources fills in what files and the environment say.
func (m *machine) pdSources(c *class, fields []pdField, s pdSettings, second bool, given map[string]any, at spot) error {
	file := map[string]string{}
	var order []string
	for _, f := range s.files {
		p, ok := m.treePath(pathText(f))
		if !ok {
			return undecided("which file settings are in")
		}
		d := m.e.Loader.Data(p)
		for _, n := range d.Items() {
			if n.Items() != nil {
				return giveUp("a file of settings")
			}
			k := n.Key
			if s.fold {
				k = strings.ToLower(k)
			}
			if _, there := file[k]; !there {
				order = append(order, k)
			}
			file[k] = expandText(n.Str(), func(name string) (string, bool) {
				if v, ok := m.lookup(name, at); ok {
					return v, true
				}
				v, ok := file[strings.ToLower(name)]
				return v, ok
			}, 0)
		}
	}
	get := func(name string) (string, bool) {
		if t, ok := m.pdVariable(name, s, at); ok {
			return t, true
		}
		if s.fold {
			name = strings.ToLower(name)
		}
		t, ok := file[name]
		return t, ok && !(s.empty && t == "")
	}
	used := map[string]bool{}
	for _, f := range fields {
		names := f.pdNames(s, second)
		t := pdType(f.typeText())
		in := m.pdClassOf(t, f.of.scope)
		for _, n := range names {
			used[strings.ToLower(n)] = true
			if in != nil || pdMany(t) {
				for _, k := range order {
					if strings.HasPrefix(strings.ToLower(k), strings.ToLower(n)) {
						used[strings.ToLower(k)] = true
					}
				}
			}
		}
		if _, ok := given[f.name]; ok {
			continue
		}
		for _, n := range names { // the environment before files
			v, ok := m.pdVariable(n, s, at)
			if !ok {
				continue
			}
			x, err := m.pdText(v, t, in)
			if err != nil {
				return err
			}
			given[f.name] = x
			break
		}
		if _, ok := given[f.name]; !ok {
			for _, n := range names {
				if v, ok := get(n); ok {
					x, err := m.pdText(v, t, in)
					if err != nil {
						return err
					}
					given[f.name] = x
					break
				}
			}
		}
		if in == nil || s.nested == "" {
			continue
		}
		for _, n := range slices.Backward(names) {
			whole, _ := given[f.name].(*object)
			more, err := m.pdNested(in, n+s.nested, s, get, whole, 0)
			if err != nil {
				return err
			}
			if more != nil {
				given[f.name] = more
			}
		}
	}
	if s.strict {
		for _, k := range order {
			if !used[strings.ToLower(k)] && file[k] != "" { // empty ones are passed over
				return m.pdFails(k + ": extra inputs are not permitted")
			}
		}
	}
	return nil
}

// pdClassOf is the model that a type names; nil for all others.
func (m *machine) pdClassOf(t *code.Node, s *scope) *class {
	for t != nil {
		switch {
		case t.Is(code.Binary) && t.Name == "|":
			if c := m.pdClassOf(t.Kid(0), s); c != nil {
				return c
			}
			t = t.Kid(1)
			continue
		case t.Is(code.Index) && (t.Kid(0).Dotted() == "Optional" || t.Kid(0).Dotted() == "typing.Optional"):
			t = t.Kid(1)
			continue
		case t.Is(code.Name) || t.Is(code.Member):
			v, err := m.eval(t, s)
			if c, ok := v.(*class); ok && err == nil {
				if model, _, _ := pdModel(c); model {
					return c
				}
			}
		}
		return nil
	}
	return nil
}

// pdNested gathers the variables of the fields of a model.
func (m *machine) pdNested(c *class, prefix string, s pdSettings, get func(string) (string, bool), whole *object, depth int) (*object, error) {
	if depth > 6 {
		return nil, spent("settings that are nested too deep")
	}
	fields, err := m.pdFields(c)
	if err != nil {
		return nil, err
	}
	out := whole
	put := func(k string, v any) {
		if out == nil {
			out = newObject()
			out.dict = true
		}
		out.set(k, v)
	}
	for _, f := range fields {
		t := pdType(f.typeText())
		in := m.pdClassOf(t, f.of.scope)
		if v, ok := get(prefix + f.name); ok {
			x, err := m.pdText(v, t, in)
			if err != nil {
				return nil, err
			}
			put(f.name, x)
		}
		if in != nil {
			var below *object
			if out != nil {
				below, _ = cellOf(out, f.name).(*object)
			}
			more, err := m.pdNested(in, prefix+f.name+s.nested, s, get, below, depth+1)
			if err != nil {
				return nil, err
			}
			if more != nil {
				put(f.name, more)
			}
		}
	}
	return out, nil
}

// pdText is the text of a variable: what is no single value is JSON.
func (m *machine) pdText(text string, t *code.Node, in *class) (any, error) {
	if in == nil && !pdMany(t) {
		return text, nil
	}
	v, err := m.parseJSON(text)
	if err != nil {
		if t.Is(code.Binary) || strings.HasSuffix(t.Kid(0).Dotted(), "Union") || strings.HasSuffix(t.Kid(0).Dotted(), "Optional") {
			return text, nil
		}
		return nil, raise("SettingsError", "error parsing value")
	}
	return v, nil
}

var pdContainers = words("list List set Set tuple Tuple dict Dict frozenset FrozenSet Sequence Mapping deque")

func pdMany(t *code.Node) bool {
	if t.Is(code.Binary) && t.Name == "|" {
		return pdMany(t.Kid(0)) || pdMany(t.Kid(1))
	}
	name := t.Dotted()
	if t.Is(code.Index) {
		name = t.Kid(0).Dotted()
		if strings.HasSuffix(name, "Optional") || strings.HasSuffix(name, "Annotated") {
			return pdMany(pdFirst(t))
		}
	}
	return pdContainers[strings.TrimPrefix(name, "typing.")]
}

func pdFirst(t *code.Node) *code.Node {
	x := t.Kid(1)
	if x.Is(code.Array) {
		x = x.Kid(0)
	}
	return x
}

// pdChecked is what a model makes of a value that a field is given.
func (m *machine) pdChecked(c *class, f pdField, v any, values, o *object, second bool, at spot) (any, error) {
	v, err := m.pdHooked(c, f, v, values, o, true, false, at)
	if err != nil {
		return nil, err
	}
	if _, opaque := v.(*opaque); opaque && !known(v) {
		return v, nil
	}
	if v == nil && (f.optional() || f.has && f.def == nil && !second) {
		return nil, nil
	}
	x, fit, sure, err := m.pdConvert(pdType(f.typeText()), f.of.scope, v, second, at, 0)
	switch {
	case err != nil:
		return nil, err
	case !sure:
		x = dontKnow("the field " + f.name)
	case !fit:
		return nil, m.pdFails(f.name + ": " + show(v))
	default:
		fit, ok := pdWithin(x, f.limit)
		if !ok {
			x = dontKnow("the field " + f.name)
		} else if !fit {
			return nil, m.pdFails(f.name + ": " + show(v))
		}
	}
	return m.pdHooked(c, f, x, values, o, false, false, at)
}

// pdWithin tells whether a value is within the limits of a field.
func pdWithin(v any, limit map[string]any) (fit, ok bool) {
	n, isNumber := toNumber(v)
	if _, isText := v.(string); isText {
		isNumber = false
	}
	size := -1
	switch x := v.(type) {
	case string:
		size = len([]rune(x))
	case *list:
		size = len(x.items)
	}
	for _, k := range sortedKeys(limit) {
		x := limit[k]
		if x == nil {
			continue
		}
		at, num := toNumber(x)
		switch k {
		case "ge", "gt", "le", "lt", "multiple_of":
			if !isNumber {
				continue
			}
			if !num || !known(x) {
				return false, false
			}
			if k == "ge" && n < at || k == "gt" && n <= at || k == "le" && n > at || k == "lt" && n >= at || k == "multiple_of" && math.Mod(n, at) != 0 {
				return false, true
			}
		case "min_length", "max_length", "min_items", "max_items":
			if size >= 0 && num && (strings.HasPrefix(k, "min") && size < int(at) || strings.HasPrefix(k, "max") && size > int(at)) {
				return false, true
			}
		case "regex", "pattern":
			p, isText := x.(string)
			t, ok := v.(string)
			if !isText || !ok {
				return false, false
			}
			if k == "regex" && !strings.HasPrefix(p, "^") {
				p = "^(?:" + p + ")"
			}
			re, err := regexp.Compile(p)
			if err != nil {
				return false, false
			}
			if !re.MatchString(t) {
				return false, true
			}
		}
	}
	return true, true
}

// pdConvert is a value as a type takes it; sure is false where that is not followed.
func (m *machine) pdConvert(t *code.Node, s *scope, v any, second bool, at spot, depth int) (out any, fit, sure bool, err error) {
	if err := m.use(1); err != nil {
		return nil, false, false, err
	}
	if t == nil || depth > 12 || !known(v) {
		return v, true, false, nil
	}
	if t.Is(code.String) { // named before it is there
		t = pdType(t.Name)
		return m.pdConvert(t, s, v, second, at, depth+1)
	}
	text, isText := v.(string)
	name := strings.TrimPrefix(strings.TrimPrefix(t.Dotted(), "typing."), "pydantic.")
	if t.Is(code.Binary) && t.Name == "|" || t.Is(code.Index) {
		head := strings.TrimPrefix(t.Kid(0).Dotted(), "typing.")
		args := t.Kids[1:]
		if t.Is(code.Index) && len(args) == 1 && args[0].Is(code.Array) {
			args = args[0].Kids
		}
		if len(args) == 0 {
			return v, true, false, nil
		}
		switch {
		case t.Is(code.Binary), head == "Union":
			if t.Is(code.Binary) {
				args = t.Kids
			}
			for _, k := range args { // one that it is already stands first in pydantic 2
				x, fit, sure, err := m.pdConvert(k, s, v, second, at, depth+1)
				if err != nil || !sure {
					return nil, false, false, err
				}
				if second && fit && x == v {
					return v, true, true, nil
				}
			}
			for _, k := range args {
				x, fit, _, err := m.pdConvert(k, s, v, second, at, depth+1)
				if err != nil || fit {
					return x, fit, true, err
				}
			}
			return nil, false, true, nil
		case head == "Optional":
			if v == nil {
				return nil, true, true, nil
			}
			return m.pdConvert(t.Kid(1), s, v, second, at, depth+1)
		case head == "Annotated" || head == "typing_extensions.Annotated":
			x, fit, sure, err := m.pdConvert(args[0], s, v, second, at, depth+1)
			for _, k := range args[1:] {
				if err != nil || !fit || !sure {
					break
				}
				w, e := m.eval(k, s)
				if o, ok := w.(*opaque); ok && e == nil && pdIsField(o) {
					fit, sure = pdWithin(x, o.keys)
				} else if name := k.Kid(0).Dotted(); strings.HasSuffix(name, "Validator") {
					sure = false
				}
			}
			return x, fit, sure, err
		case head == "Literal":
			for _, k := range args {
				w, err := m.eval(k, s)
				if err != nil {
					return nil, false, false, err
				}
				if same, ok := equals(w, v, true); ok && same {
					return v, true, true, nil
				}
			}
			return nil, false, true, nil
		case pdContainers[head] && head != "dict" && head != "Dict" && head != "Mapping":
			l, ok := v.(*list)
			if !ok {
				return nil, false, true, nil
			}
			c := &list{tuple: strings.EqualFold(head, "tuple"), set: strings.Contains(strings.ToLower(head), "set")}
			for i, x := range l.items {
				k := args[min(i, len(args)-1)]
				if k.Name == "..." || k.Is(code.Unknown) {
					k = args[0]
				}
				y, fit, sure, err := m.pdConvert(k, s, x, second, at, depth+1)
				if err != nil || !fit || !sure {
					return nil, fit, sure, err
				}
				c.items = append(c.items, y)
			}
			return c, true, true, nil
		case pdContainers[head]:
			o, ok := v.(*object)
			if !ok {
				return nil, false, true, nil
			}
			o.dict = true
			if len(args) == 2 {
				d := newObject()
				d.dict = true
				for _, k := range o.keys {
					y, fit, sure, err := m.pdConvert(args[1], s, o.cells[k].v, second, at, depth+1)
					if err != nil || !fit || !sure {
						return nil, fit, sure, err
					}
					d.set(k, y)
				}
				return d, true, true, nil
			}
			return o, true, true, nil
		}
		return v, true, false, nil
	}
	if t.Is(code.Null) {
		return nil, v == nil, true, nil
	}
	if t.Is(code.Call) { // conint(ge=1), constr(min_length=1)
		fn := strings.TrimPrefix(t.Kid(0).Dotted(), "pydantic.")
		kind := map[string]string{"conint": "int", "constr": "str", "confloat": "float"}[fn]
		w, err := m.eval(t, s)
		o, ok := w.(*opaque)
		if kind == "" || err != nil || !ok {
			return v, true, false, nil
		}
		x, fit, sure, err := m.pdConvert(&code.Node{Kind: code.Name, Name: kind}, s, v, second, at, depth+1)
		if err != nil || !fit || !sure {
			return nil, fit, sure, err
		}
		fit, sure = pdWithin(x, o.keys)
		return x, fit, sure, nil
	}
	number := func() (float64, bool) {
		switch x := v.(type) {
		case integer:
			return float64(x), true
		case float64:
			return x, true
		case bool:
			if x {
				return 1, true
			}
			return 0, true
		case string:
			n, err := strconv.ParseFloat(strings.TrimSpace(x), 64)
			return n, err == nil
		}
		return 0, false
	}
	whole := func() (any, bool) {
		if isText {
			t := strings.TrimSpace(text)
			if second {
				t = strings.TrimSuffix(t, ".0")
			}
			n, err := strconv.ParseInt(strings.ReplaceAll(strings.TrimPrefix(t, "+"), "_", ""), 10, 64)
			return integer(n), err == nil
		}
		n, ok := number()
		if n != math.Trunc(n) && second {
			ok = false
		}
		return integer(n), ok
	}
	switch name {
	case "Any", "object":
		return v, true, true, nil
	case "str", "StrictStr", "AnyUrl", "AnyHttpUrl", "HttpUrl", "PostgresDsn", "RedisDsn", "AmqpDsn", "MongoDsn", "EmailStr", "NameEmail":
		if isText {
			if name == "AnyUrl" || name == "AnyHttpUrl" || name == "HttpUrl" || strings.HasSuffix(name, "Dsn") {
				return dontKnow("an address"), strings.Contains(text, ":"), true, nil
			}
			return text, true, true, nil
		}
		if _, isList := v.(*list); isList || second {
			return nil, false, true, nil
		}
		if _, isObject := v.(*object); isObject {
			o := v.(*object)
			if o.class != nil {
				return v, true, false, nil
			}
			return nil, false, true, nil
		}
		return pyShow(v), true, true, nil
	case "SecretStr", "SecretBytes":
		o := newObject()
		o.class = &class{name: "SecretStr", builtin: true, statics: newObject(), methods: newObject()}
		o.class.methods.set("get_secret_value", &function{native: func(*machine, any, []any, map[string]any, spot) (any, error) { return v, nil }})
		return o, isText, true, nil
	case "int", "StrictInt", "PositiveInt", "NonNegativeInt", "NegativeInt", "NonPositiveInt":
		n, ok := whole()
		if !ok {
			return nil, false, true, nil
		}
		i := n.(integer)
		return n, !(name == "PositiveInt" && i <= 0 || name == "NonNegativeInt" && i < 0 || name == "NegativeInt" && i >= 0 || name == "NonPositiveInt" && i > 0), true, nil
	case "float", "PositiveFloat", "NonNegativeFloat":
		n, ok := number()
		return n, ok && !(name == "PositiveFloat" && n <= 0 || name == "NonNegativeFloat" && n < 0), true, nil
	case "bool", "StrictBool":
		if b, ok := v.(bool); ok {
			return b, true, true, nil
		}
		switch strings.ToLower(pyShow(v)) {
		case "1", "true", "t", "yes", "y", "on":
			return true, true, true, nil
		case "0", "false", "f", "no", "n", "off":
			return false, true, true, nil
		}
		return nil, false, true, nil
	case "Path", "pathlib.Path":
		return pyPath(text), isText, true, nil
	case "IPvAnyAddress", "IPv4Address", "IPv6Address", "ipaddress.IPv4Address", "ipaddress.IPv6Address":
		a, err := netip.ParseAddr(text)
		return text, err == nil && (!strings.HasSuffix(name, "IPv4Address") || a.Is4()) && (!strings.HasSuffix(name, "IPv6Address") || a.Is6()), isText, nil
	case "list", "List", "set", "tuple":
		_, ok := v.(*list)
		return v, ok, true, nil
	case "dict", "Dict":
		o, ok := v.(*object)
		if ok && o.class == nil {
			o.dict = true
		}
		return v, ok, true, nil
	}
	if !t.Is(code.Name) && !t.Is(code.Member) {
		return v, true, false, nil
	}
	w, err := m.eval(t, s)
	if err != nil {
		if _, thrown := err.(*thrown); thrown {
			return v, true, false, nil
		}
		return nil, false, false, err
	}
	c, ok := w.(*class)
	if !ok {
		return v, true, false, nil
	}
	if o, ok := v.(*object); ok && o.class != nil && derives(o.class, c) {
		return o, true, true, nil
	}
	switch model, _, _ := pdModel(c); {
	case c.enum:
		x, err := m.build(c, []any{v}, nil, at)
		if t, ok := err.(*thrown); ok && t != nil {
			if n, isInt := whole(); isInt && isText { // of a number
				if x, err := m.build(c, []any{n}, nil, at); err == nil {
					return x, true, true, nil
				}
			}
			return nil, false, true, nil
		}
		return x, true, err == nil, err
	case model:
		o, ok := v.(*object)
		if !ok || o.class != nil {
			return nil, false, true, nil
		}
		keys := map[string]any{}
		for _, k := range o.keys {
			keys[k] = o.cells[k].v
		}
		x, err := m.create(c, nil, keys, at)
		if t, ok := err.(*thrown); ok && t != nil {
			return nil, false, true, nil
		}
		return x, true, err == nil, err
	}
	return v, true, false, nil
}

// pdHooked hands a value to the validators of its field: those that stand before the
// conversion, or those after it; where the value is a default, only those that
// always run.
func (m *machine) pdHooked(c *class, f pdField, v any, values, o *object, before, isDefault bool, at spot) (any, error) {
	for _, x := range slices.Backward(c.line()) {
		for _, k := range x.node.Kid(1).Kids {
			fn, mark := pdValidator(x, k)
			if mark == nil || strings.Contains(mark.path, "root_validator") || strings.Contains(mark.path, "model_validator") {
				continue
			}
			named := false
			for _, a := range mark.args {
				named = named || a == any(f.name) || a == any("*")
			}
			mode, _ := mark.keys["mode"].(string)
			first := mark.keys["pre"] == true || mode == "before"
			if !named || first != before || isDefault && mark.keys["always"] != true {
				continue
			}
			if mode == "wrap" || mode == "plain" || mark.keys["each_item"] == true {
				return dontKnow("what a validator makes of " + f.name), nil
			}
			y, err := m.pdCall(fn, c, v, values, at)
			if err != nil {
				return nil, pdRefused(err)
			}
			v = y
		}
	}
	return v, nil
}

// pdRefused is what the error of a validator becomes.
func pdRefused(err error) error {
	t, ok := err.(*thrown)
	if !ok {
		return err
	}
	if o, ok := t.v.(*object); ok && o.class != nil && (o.class.name == "ValueError" || o.class.name == "TypeError" || o.class.name == "AssertionError") {
		return raise("ValidationError", "refused by a validator")
	}
	return err
}

// pdValidator is a function of a class that validates, and what it is marked with.
func pdValidator(c *class, k *code.Node) (*function, *opaque) {
	if !k.Is(code.Func) {
		return nil, nil
	}
	var v any
	if v, _ = c.statics.get(k.Name); v == any(undefined) {
		v, _ = c.methods.get(k.Name)
	}
	f, ok := v.(*function)
	if !ok {
		return nil, nil
	}
	for _, d := range f.marks {
		if strings.HasPrefix(d.path, "pydantic") && strings.Contains(d.path, "validator") {
			return f, d
		}
	}
	return nil, nil
}

// pdCall calls a validator with what it asks for by name.
func (m *machine) pdCall(f *function, c *class, v any, values any, at spot) (any, error) {
	w := *f
	w.this, w.bound, w.static, w.classOf = nil, false, true, false
	ps := f.node.Kid(0).Kids
	args := []any{}
	if len(ps) > 0 && (ps[0].Name == "cls" || ps[0].Name == "self" || f.classOf) && !f.static {
		args = append(args, c)
		ps = ps[1:]
	}
	args = append(args, v)
	keys := map[string]any{}
	for i, p := range ps {
		switch {
		case i == 0:
		case p.Name == "values":
			keys["values"] = values
		case p.Name == "field" || p.Name == "config":
			keys[p.Name] = dontKnow("the " + p.Name + " of a validator")
		case i == 1 && p.Flag&code.Rest == 0 && p.Name != "": // of pydantic 2, by any name
			o := newObject()
			o.class = &class{name: "ValidationInfo", builtin: true, statics: newObject(), methods: newObject()}
			o.set("data", values)
			keys[p.Name] = o
		}
	}
	return m.call(&w, undefined, args, keys, at)
}

// pdHooks runs what validates the whole model: before its fields are made, on what
// is given, or after, on the object.
func (m *machine) pdHooks(c *class, before bool, values *object, given map[string]any, o *object, at spot) error {
	for _, x := range slices.Backward(c.line()) {
		for _, k := range x.node.Kid(1).Kids {
			fn, mark := pdValidator(x, k)
			if mark == nil || !strings.Contains(mark.path, "root_validator") && !strings.Contains(mark.path, "model_validator") {
				continue
			}
			mode, _ := mark.keys["mode"].(string)
			if first := mark.keys["pre"] == true || mode == "before"; first != before {
				continue
			}
			if mode == "wrap" {
				return giveUp("a validator around a model")
			}
			if mode == "after" { // on the object itself
				w := *fn
				w.static = false
				if _, err := m.call(&w, o, nil, nil, at); err != nil {
					return pdRefused(err)
				}
				continue
			}
			data := values
			if before {
				data = newObject()
				data.dict = true
				for _, k := range sortedKeys(given) {
					data.set(k, given[k])
				}
			}
			y, err := m.pdCall(fn, c, data, data, at)
			if err != nil {
				return pdRefused(err)
			}
			now, ok := y.(*object)
			if !ok {
				return giveUp("what a validator makes of a model")
			}
			if before {
				clear(given)
				for _, k := range now.keys {
					given[k] = now.cells[k].v
				}
				continue
			}
			for _, k := range now.keys {
				o.set(k, now.cells[k].v)
			}
		}
	}
	return nil
}

// pdClassKey is what the class of a model does: Model.parse_obj(data).
func (m *machine) pdClassKey(c *class, name string) (any, bool) {
	switch name {
	case "parse_obj", "model_validate":
	default:
		return nil, false
	}
	if model, _, _ := pdModel(c); !model {
		return nil, false
	}
	return &function{name: name, native: func(m *machine, _ any, args []any, _ map[string]any, at spot) (any, error) {
		o, ok := first(args).(*object)
		if !ok || o.class != nil {
			return nil, giveUp("what a model is made of")
		}
		keys := map[string]any{}
		for _, k := range o.keys {
			keys[k] = o.cells[k].v
		}
		return m.create(c, nil, keys, at)
	}}, true
}

// pdDict is a model as a dictionary, with the models in it.
func (m *machine) pdDict(o *object, depth int) *object {
	d := o.asDict()
	if m.use(64*len(d.keys)) != nil {
		return d
	}
	for _, k := range d.keys {
		if in, ok := d.cells[k].v.(*object); ok && in.class != nil && depth < 12 {
			if model, _, _ := pdModel(in.class); model {
				d.set(k, m.pdDict(in, depth+1))
			}
		}
	}
	return d
}
