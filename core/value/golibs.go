package value

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// Libraries of Go that read the environment, files and the command line into
// structures or by keys (documentation of kelseyhightower/envconfig 1.4,
// sethvargo/go-envconfig 1.3, caarlos0/env 11, cleanenv 1.5, kong 1.12, viper
// 1.21, pflag 1.0, cobra 1.10, urfave/cli 2 and 3; read 2026-11).

// Library is the path of an import of Go without its major version (Go Modules
// Reference, "Module paths"; gopkg.in puts it behind a dot; read 2026-11).
func Library(p string) string {
	parts := strings.Split(p, "/")
	kept := parts[:0]
	for _, x := range parts {
		if len(x) > 1 && x[0] == 'v' && strings.Trim(strings.SplitN(x[1:], ".", 2)[0], "0123456789") == "" {
			if i := strings.IndexByte(x, '.'); i > 0 { // v11.Parse
				kept = append(kept[:len(kept)-1], kept[len(kept)-1]+x[i:])
			}
			continue
		}
		if name, rest, ok := strings.Cut(x, ".v"); ok && parts[0] == "gopkg.in" { // gopkg.in/yaml.v3
			if digits := strings.TrimLeft(rest, "0123456789"); digits != rest && (digits == "" || digits[0] == '.') {
				x = name + digits
			}
		}
		kept = append(kept, x)
	}
	return strings.Join(kept, "/")
}

// flagKinds are the methods of a set of flags that define one.
var flagKinds = map[string]bool{"String": true, "Int": true, "Uint": true, "Uint16": true, "Int64": true, "Int32": true, "StringP": true, "IntP": true, "UintP": true, "Uint16P": true, "Int64P": true}

// goLibrary evaluates calls of these libraries; nil for any other.
func (e *Eval) goLibrary(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	if callee.Is(code.Index) && callee.Kid(0).Is(code.Member) && callee.Kids[0].Name == "ParseAs" { // env.ParseAs[Settings]()
		if fn := e.expr(callee.Kids[0], s, c); strings.HasSuffix(Library(fn.Text), "caarlos0/env.ParseAs") {
			if cls, f := e.goStruct(callee.Kid(1).Dotted()); cls != nil {
				return e.goFields(cls, f, "env", "", nil)
			}
		}
		return nil
	}
	if !callee.Is(code.Member) {
		return nil
	}
	if callee.Name == "Must" && len(n.Kids) == 2 && n.Kids[1].Is(code.Call) { // what ends the program, or the first of what it is given
		if fn := e.expr(callee, s, c); strings.HasSuffix(Library(fn.Text), "caarlos0/env.Must") {
			return e.goLibrary(n.Kids[1], s, c)
		}
	}
	arg := func(i int) *Value {
		if i+1 < len(n.Kids) {
			return e.expr(n.Kids[i+1], s, c)
		}
		return &Value{Kind: Null, At: at}
	}
	if flagKinds[callee.Name] && len(n.Kids) > 2 {
		base, of := callee.Kid(0), ""
		switch {
		case base.Is(code.Call) && (base.Kid(0).Is(code.Member) || base.Kid(0).Is(code.Name)):
			of = base.Kids[0].Name
		case base.Is(code.Name):
			if b := e.expr(base, s, c); b.Kind == External {
				of = Library(b.Text)
				of = of[strings.LastIndexByte(of, '/')+1:]
			}
		}
		switch of {
		case "flag", "pflag", "Flags", "PersistentFlags", "LocalFlags", "flag.NewFlagSet()", "pflag.NewFlagSet()", "flag.CommandLine", "pflag.CommandLine":
			def, short := 1, ""
			if strings.HasSuffix(callee.Name, "P") {
				def, short = 2, arg(1).literal()
			}
			return e.goFlag(arg(0), arg(def), !strings.HasPrefix(callee.Name, "String"), n, s, short)
		}
	}
	switch callee.Name {
	case "GetString", "GetInt", "GetUint16", "GetUint", "Get", "GetInt32", "GetInt64", "GetBool":
		base := callee.Kid(0)
		if base.Is(code.Call) && base.Kid(0).Is(code.Member) && strings.HasSuffix(base.Kids[0].Name, "Flags") { // cmd.Flags().GetInt
			return e.flagNamed(arg(0).literal(), at)
		}
		if b := e.expr(base, s, c); b.Kind == External && strings.HasPrefix(Library(b.Text), "github.com/spf13/viper") && arg(0).Kind == Str {
			v := e.viper(arg(0).Text, at)
			if strings.Contains(callee.Name, "Int") || strings.Contains(callee.Name, "Uint") {
				return op("||", false, at, op("Number", false, at, v), number(0, at))
			}
			return v
		}
	case "Int", "String", "Uint", "Int64", "Bool":
		if len(n.Kids) == 2 && arg(0).Kind == Str { // ctx.Int("port") of urfave/cli
			if b := callee.Kid(0); b.Is(code.Name) && e.usesLibrary("github.com/urfave/cli") {
				return e.urfave(arg(0).Text, at)
			}
		}
	}
	return nil
}

// usesLibrary reports whether a file of the program imports a package.
func (e *Eval) usesLibrary(p string) bool {
	for _, f := range e.Loader.Loaded() {
		for _, i := range f.Imports {
			if strings.HasPrefix(i.Node.Name, p) {
				return true
			}
		}
	}
	return false
}

// flagNamed finds the definition of a flag by its name.
func (e *Eval) flagNamed(name string, at place.Span) *Value {
	for kind := range flagKinds {
		for _, site := range e.calls(kind) {
			if site.Scope.File.Lang == code.Go && site.Node.Kid(1).Is(code.String) && site.Node.Kids[1].Name == name {
				return e.Expr(site.Node, site.Scope)
			}
		}
	}
	return unknown("the flag "+name, at)
}

// goStruct finds a structure by the name of its type.
func (e *Eval) goStruct(typ string) (*code.Node, *code.File) {
	name := Tail(typ, 1)
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Go || f.Body == nil {
			continue
		}
		if k := f.Classes[name]; k != nil && name != "" {
			return k, f
		}
	}
	return nil, nil
}

// tagged gives a key of a struct's tag (package reflect, StructTag).
func tagged(tag, key string) (string, bool) {
	for tag = strings.TrimLeft(tag, " "); tag != ""; tag = strings.TrimLeft(tag, " ") {
		i := strings.Index(tag, `:"`)
		if i < 0 {
			return "", false
		}
		name := tag[:i]
		rest := tag[i+2:]
		end := 0
		for end < len(rest) && rest[end] != '"' {
			if rest[end] == '\\' {
				end++
			}
			end++
		}
		if end >= len(rest) {
			return "", false
		}
		if name == key {
			return strings.ReplaceAll(rest[:end], `\"`, `"`), true
		}
		tag = rest[end+1:]
	}
	return "", false
}

// snake is a name with _ between its words: BindPort is BIND_PORT.
func snake(name string) string {
	var b strings.Builder
	for i := 0; i < len(name); i++ {
		c := name[i]
		upper := c >= 'A' && c <= 'Z'
		if upper && i > 0 && (name[i-1] < 'A' || name[i-1] > 'Z' || i+1 < len(name) && name[i+1] >= 'a' && name[i+1] <= 'z') {
			b.WriteByte('_')
		}
		b.WriteByte(c)
	}
	return strings.ToUpper(b.String())
}

// goFields gives a structure as a library fills it. How is the library; prefix
// goes before the names of variables; now is the object before, nil for none.
func (e *Eval) goFields(cls *code.Node, f *code.File, how, prefix string, now *Value) *Value {
	o := &Value{Kind: Object, Text: cls.Name, At: f.At(cls)}
	e.goFill(o, cls.Kid(1), f, how, prefix, now, 0)
	return o
}

func (e *Eval) goFill(o *Value, block *code.Node, f *code.File, how, prefix string, now *Value, depth int) {
	for _, b := range block.Kids {
		if !b.Is(code.Bind) || !b.Kid(0).Is(code.Name) || depth > 4 {
			continue
		}
		name, tag := b.Kids[0].Name, ""
		if t := b.Kid(2); t.Is(code.String) {
			tag = t.Name
		}
		at := f.At(b)
		inner, file := b.Kid(3), f
		if inner == nil {
			if cls, g := e.goStruct(b.Alias); cls != nil && !strings.Contains(b.Alias, ".") {
				inner, file = cls.Kid(1), g
			}
		}
		if inner != nil {
			sub := prefix
			for _, key := range []string{"envPrefix", "env-prefix", "prefix"} {
				if p, ok := tagged(tag, key); ok {
					sub += p
				}
			}
			if how == "envconfig" {
				if p, ok := tagged(tag, "envconfig"); ok {
					sub = join(prefix, strings.ToUpper(p))
				} else if b.Kids[0].Name != b.Alias { // not embedded
					sub = join(prefix, strings.ToUpper(name))
				}
			}
			in := &Value{Kind: Object, Text: b.Alias, At: at}
			e.goFill(in, inner, file, how, sub, now.Get(name), depth+1)
			o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, in)
			if b.Kids[0].Name == b.Alias { // its fields are this one's too
				o.Keys, o.Kids = append(o.Keys, in.Keys...), append(o.Kids, in.Kids...)
			}
			continue
		}
		v := e.goField(name, tag, how, prefix, now.Get(name), at)
		if v == nil {
			continue
		}
		if isNumber(b.Alias) {
			v = op("wholenumber", true, at, v)
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, v.with(Step{at, f.Between(b.Off, b.End, 72)}))
	}
}

func isNumber(typ string) bool {
	switch typ {
	case "int", "int16", "int32", "int64", "uint", "uint16", "uint32", "uint64":
		return true
	}
	return false
}

// join puts a prefix and a name together with _ between them.
func join(prefix, name string) string {
	if prefix == "" {
		return name
	}
	return prefix + "_" + name
}

// goField is one field: its variable, its flag, its default; nil where the
// library leaves it alone.
func (e *Eval) goField(name, tag, how, prefix string, now *Value, at place.Span) *Value {
	def, has := tagged(tag, map[string]string{"env": "envDefault", "cleanenv": "env-default", "kong": "default", "envconfig": "default"}[how])
	variable, required := "", false
	var more *Value // what stands in where the variable is not set
	switch how {
	case "env":
		t, ok := tagged(tag, "env")
		if !ok {
			return nil
		}
		variable, _, _ = strings.Cut(t, ",")
		required = strings.Contains(t, ",required") || strings.Contains(t, ",notEmpty")
		variable = prefix + variable
	case "sethvargo":
		t, ok := tagged(tag, "env")
		if !ok {
			return nil
		}
		parts := strings.SplitN(t, ",", 2)
		variable = prefix + parts[0]
		if len(parts) > 1 {
			required = strings.Contains(parts[1], "required")
			if _, d, ok := strings.Cut(parts[1], "default="); ok {
				def, has = d, true
			}
		}
	case "cleanenv":
		t, ok := tagged(tag, "env")
		if !ok {
			return nil
		}
		t, _, _ = strings.Cut(t, ",")
		variable = prefix + t
		r, _ := tagged(tag, "env-required")
		required = r == "true"
	case "kong":
		long, ok := tagged(tag, "name")
		if !ok {
			long = strings.ToLower(strings.ReplaceAll(snake(name), "_", "-"))
		}
		flags := []string{"--" + long}
		if short, ok := tagged(tag, "short"); ok {
			flags = append(flags, "-"+short)
		}
		if v := e.given(flags); v != nil {
			return v
		}
		variable, _ = tagged(tag, "env")
		variable, _, _ = strings.Cut(variable, ",")
		if variable == "" && !has {
			return now
		}
	case "envconfig":
		alt, named := tagged(tag, "envconfig")
		key := strings.ToUpper(name)
		if split, _ := tagged(tag, "split_words"); split == "true" {
			key = snake(name)
		}
		if named {
			key = strings.ToUpper(alt)
		}
		variable = join(strings.ToUpper(prefix), key)
		r, _ := tagged(tag, "required")
		required = r == "true"
		if named && prefix != "" { // without the prefix too
			more = &Value{Kind: Env, Text: key, Unset: ReadsNull, At: at}
		}
	}
	other := now
	if has && !(how == "cleanenv" && now != nil && (now.Kind == Str && now.Text != "" || now.Kind == Num && now.Num != 0)) { // cleanenv takes it for what is blank only
		other = text(def, at)
		if how == "env" && strings.Contains(def, "${") {
			other = expanded(def, at)
		}
	}
	if variable == "" {
		return other
	}
	v := &Value{Kind: Env, Text: variable, Unset: ReadsNull, At: at}
	if required {
		v.Unset = Raises
		if more == nil {
			return v
		}
	}
	out := v
	if other == nil {
		other = text("", at)
	}
	if more != nil {
		if required {
			more.Unset = Raises
		} else if has {
			more = op("unset", true, at, more, zeroOf(other))
		}
		if out = op("unset", true, at, v, more); has && how == "envconfig" {
			return out
		}
	}
	if how == "env" || how == "envconfig" && !has { // an empty variable takes the default
		return op("||", true, at, out, zeroOf(other))
	}
	return op("unset", true, at, out, zeroOf(other))
}

func zeroOf(v *Value) *Value {
	if v.Kind == Str && v.Text == "" {
		return number(0, v.At)
	}
	return v
}

// expanded is a text with ${NAME} and $NAME in it (package os, ExpandEnv).
func expanded(s string, at place.Span) *Value {
	return Fill(s, "$", "", at, func(name string) *Value { return Variable(name, ReadsEmpty, at) })
}

// fillers are the functions that fill a structure whose address they get.
var fillers = map[string]string{
	"github.com/kelseyhightower/envconfig.Process": "envconfig", "github.com/kelseyhightower/envconfig.MustProcess": "envconfig",
	"github.com/sethvargo/go-envconfig.Process": "sethvargo", "github.com/sethvargo/go-envconfig.MustProcess": "sethvargo", "github.com/sethvargo/go-envconfig.ProcessWith": "sethvargo",
	"github.com/caarlos0/env.Parse": "env", "github.com/caarlos0/env.ParseWithOptions": "env", "github.com/caarlos0/env.MustParse": "env",
	"github.com/ilyakaznacheev/cleanenv.ReadEnv": "cleanenv", "github.com/ilyakaznacheev/cleanenv.ReadConfig": "cleanenv",
	"github.com/alecthomas/kong.Parse": "kong", "github.com/alecthomas/kong.Must": "kong", "github.com/alecthomas/kong.New": "kong",
	"github.com/spf13/viper.Unmarshal": "viper", "github.com/spf13/viper.UnmarshalExact": "viper",
}

// decoders fill a structure from data.
var decoders = map[string]bool{"encoding/json.Unmarshal": true, "gopkg.in/yaml.Unmarshal": true, "go.yaml.in/yaml.Unmarshal": true, "github.com/pelletier/go-toml.Unmarshal": true, "github.com/BurntSushi/toml.Unmarshal": true, "github.com/BurntSushi/toml.Decode": true, "github.com/BurntSushi/toml.DecodeFile": true, "github.com/goccy/go-yaml.Unmarshal": true, "sigs.k8s.io/yaml.Unmarshal": true}

// Decodes reports whether a call of Go reads data into its second argument.
func Decodes(path string) bool { return decoders[path] }

// handed gives what a call writes into an object of Go whose address it gets;
// nil where it leaves it as it is.
func (e *Eval) handed(now *Value, name string, site code.Site, c *context) *Value {
	n, s := site.Node, site.Scope
	at := s.File.At(n)
	which := -1
	for i, a := range n.Args() {
		if a.Is(code.Name) && a.Name == name {
			which = i
		}
	}
	if which < 0 {
		if fn := n.Kid(0); fn.Is(code.Member) && fn.Kid(0).Is(code.Name) && fn.Kids[0].Name == name {
			return e.afterMethod(now, n, s, c)
		}
		return nil
	}
	dots := func(why string) *Value {
		return &Value{Kind: Object, At: at, Keys: []string{"..."}, Kids: []*Value{unknown(why, at)}}
	}
	fn := e.expr(n.Kid(0), s, c)
	switch fn.Kind {
	case External:
		p := Library(fn.Text)
		how := fillers[p]
		if how == "" && strings.HasPrefix(p, "github.com/spf13/viper.New()") && strings.HasSuffix(p, ".Unmarshal") {
			how = "viper"
		}
		if how != "" {
			cls, f := e.goStruct(now.Text)
			if cls == nil {
				return dots("a structure that is filled from outside")
			}
			prefix := ""
			if how == "envconfig" && which > 0 {
				if a := e.expr(n.Kids[1], s, c); a.Kind == Str {
					prefix = a.Text
				}
			}
			if how == "env" && len(n.Kids) > which+2 {
				if o := e.expr(n.Kids[which+2], s, c); o.Get("Prefix") != nil {
					prefix = o.Get("Prefix").literal()
				}
			}
			if how == "viper" {
				return e.viperFields(cls, f, "", 0)
			}
			if strings.HasSuffix(p, "cleanenv.ReadConfig") {
				if d := e.goData(e.expr(n.Kids[1], s, c)); d != nil {
					base := *now
					base.spread(e.decoded(d, cls, 0), false)
					now = &base
				}
			}
			return e.goFields(cls, f, how, prefix, now)
		}
		stream := strings.HasSuffix(p, ".NewDecoder().Decode") && decoders[strings.TrimSuffix(p, "NewDecoder().Decode")+"Unmarshal"]
		if decoders[p] || stream {
			cls, _ := e.goStruct(now.Text)
			fill := func(d *document.Node) *Value { return e.decoded(d, cls, 0) }
			var o *Value
			if stream && fn.Recv != nil && len(fn.Recv.Kids) == 1 {
				o = e.goHeld(fn.Recv.Kids[0], at, fill, 0)
			} else if len(n.Kids) > 1 {
				from := e.expr(n.Kids[1], s, c)
				if strings.HasSuffix(p, "DecodeFile") {
					o = e.named(from, at, fill)
				} else if o = e.goHeld(from, at, fill, 0); o == nil && strings.HasSuffix(from.Text, ".ReadFile()") && len(from.Kids) == 1 && from.Kids[0].Kind == Str {
					return nil // there is no such file: it stays as it is
				}
			}
			if o == nil {
				return dots("what is read into " + name)
			}
			return o
		}
		last := Tail(p, 1)
		for _, word := range []string{"Unmarshal", "Decode", "Parse", "Load", "Process", "Bind", "Fill", "Populate", "Unpack", "Scan"} {
			if strings.Contains(last, word) && !strings.HasPrefix(p, "flag.") && !strings.HasPrefix(p, "github.com/spf13/pflag.") {
				return dots("what " + last + " puts into " + name)
			}
		}
		return nil
	case Func:
		if fn.ref != nil && reflects(fn.ref.node, which) {
			return dots("what " + fn.Text + " writes into " + name + " by reflection")
		}
		args, _ := e.args(n, s, c)
		return e.writes(fn, which, now, args, c)
	case Cond, Op, List:
		return dots("what " + s.File.Text(n.Kid(0)) + " makes of " + name)
	case Unknown:
		if !n.Kid(0).Is(code.Name) {
			return nil
		}
		// A function that was handed over: one of a list that a loop calls.
		list := e.looped(n.Kids[0].Name, s, c)
		if list == nil || len(list.Kids) > maxTurns {
			return dots("what " + n.Kids[0].Name + " makes of " + name)
		}
		args, _ := e.args(n, s, c)
		out := now
		for _, f := range list.Kids {
			if f.Kind != Func {
				return dots("what " + n.Kids[0].Name + " makes of " + name)
			}
			if w := e.writes(f, which, out, args, c); w != nil {
				out = w
			}
		}
		if out == now {
			return nil
		}
		return out
	}
	return nil
}

// reflects reports whether a function hands a parameter to package reflect, which
// may write into it.
func reflects(fn *code.Node, which int) bool {
	p := fn.Kid(0).Kid(which)
	if p == nil {
		return false
	}
	found := false
	fn.Kid(1).Walk(func(n *code.Node) bool {
		if n.Is(code.Call) && strings.HasPrefix(n.Kid(0).Dotted(), "reflect.") {
			for _, a := range n.Args() {
				found = found || a.Is(code.Name) && a.Name == p.Name
			}
		}
		return !found
	})
	return found
}

// looped is the list that a loop of the function goes through with a name; nil
// where it is not known.
func (e *Eval) looped(name string, s *code.Scope, c *context) *Value {
	if s.Func == nil {
		return nil
	}
	var list *Value
	s.Func.Kid(1).Walk(func(n *code.Node) bool {
		if n.Is(code.Loop) && len(n.Kids) == 3 && n.Kids[0].Is(code.Name) && n.Kids[0].Name == name && list == nil {
			if v := e.expr(n.Kids[1], s, c); v.Kind == List {
				list = v
			}
		}
		return true
	})
	return list
}

// writes gives an object as a function leaves it that gets its address; nil
// where the function writes nothing into it.
func (e *Eval) writes(fn *Value, which int, now *Value, args []*Value, c *context) *Value {
	r := fn.ref
	if r == nil || r.node.Kid(0).Kid(which) == nil || e.busy(r.node) {
		return nil
	}
	e.total++
	if e.steps++; e.steps > maxExprs || e.total > maxTotal { // methods that call methods: each way through them is another
		e.cut++
		return &Value{Kind: Object, At: now.At, Keys: []string{"..."}, Kids: []*Value{unknown("too many calls that change it", now.At)}}
	}
	inner := r.file.Funcs[r.node]
	param := r.node.Kid(0).Kids[which].Name
	if inner == nil || len(e.changes(r.file)[param]) == 0 {
		return nil
	}
	e.active[r.node] = true
	defer delete(e.active, r.node)
	if which < len(args) {
		args[which] = now
	}
	if r.up != nil {
		c = r.up
	}
	before := *now
	of := &context{fn: r.node, args: args, up: c}
	if r.node.Kids[0].Kids[which].Flag&code.Star != 0 {
		of.this = now
	}
	out := e.changedBy(inner, param, &before, inner, 0, of)
	if out == &before || len(out.Keys) == len(before.Keys) {
		return nil
	}
	return out
}

// goHeld is what `fill` makes of the data behind a reader of Go; nil where it is
// not known.
func (e *Eval) goHeld(v *Value, at place.Span, fill func(*document.Node) *Value, depth int) *Value {
	if v.Kind != External || len(v.Kids) == 0 || depth > 4 {
		return nil
	}
	switch v.Text {
	case "os.Open()", "os.ReadFile()", "io/ioutil.ReadFile()", "os.OpenFile()":
		return e.named(v.Kids[0], at, fill)
	case embedded:
		if d := e.Loader.Data(v.Kids[0].Text); d != nil {
			return fill(d)
		}
	case "bytes.NewReader()", "strings.NewReader()", "bufio.NewReader()", "bytes.NewBuffer()", "io.ReadAll()", "io/ioutil.ReadAll()":
		return e.goHeld(v.Kids[0], at, fill, depth+1)
	}
	return nil
}

// goData is a data file by its path.
func (e *Eval) goData(name *Value) *document.Node {
	p, ok := e.PathOf(name)
	if !ok {
		return nil
	}
	return e.Loader.Data(p)
}

// decoded gives the fields that a document sets, by their names or tags; letter
// case does not count.
func (e *Eval) decoded(d *document.Node, cls *code.Node, depth int) *Value {
	o := &Value{Kind: Object, At: d.At()}
	if d.Kind != document.Map || depth > 6 {
		return o
	}
	for _, k := range d.Kids {
		name, typ := strings.ToUpper(k.Key[:min(1, len(k.Key))])+k.Key[min(1, len(k.Key)):], ""
		if cls != nil {
			for _, b := range cls.Kid(1).Kids {
				if !b.Is(code.Bind) || !b.Kid(0).Is(code.Name) {
					continue
				}
				tag := ""
				if t := b.Kid(2); t.Is(code.String) {
					tag = t.Name
				}
				same := strings.EqualFold(b.Kids[0].Name, k.Key)
				for _, lib := range []string{"json", "yaml", "toml", "mapstructure"} {
					t, _ := tagged(tag, lib)
					t, _, _ = strings.Cut(t, ",")
					same = same || t == k.Key
				}
				if same {
					name, typ = b.Kids[0].Name, b.Alias
				}
			}
		}
		v := FromDocument(k)
		if k.Kind == document.Map {
			sub, _ := e.goStruct(typ)
			v = e.decoded(k, sub, depth+1)
			v.Text = typ
		}
		o.Keys, o.Kids = append(o.Keys, name), append(o.Kids, v)
	}
	return o
}

// viperFields gives a structure as viper.Unmarshal fills it.
func (e *Eval) viperFields(cls *code.Node, f *code.File, prefix string, depth int) *Value {
	o := &Value{Kind: Object, Text: cls.Name, At: f.At(cls)}
	e.viperFill(o, cls.Kid(1), f, prefix, depth)
	return o
}

func (e *Eval) viperFill(o *Value, block *code.Node, f *code.File, prefix string, depth int) {
	for _, b := range block.Kids {
		if !b.Is(code.Bind) || !b.Kid(0).Is(code.Name) || depth > 4 {
			continue
		}
		key := strings.ToLower(b.Kids[0].Name)
		if t := b.Kid(2); t.Is(code.String) {
			if m, ok := tagged(t.Name, "mapstructure"); ok {
				key, _, _ = strings.Cut(m, ",")
			}
		}
		var v *Value
		if inner := b.Kid(3); inner != nil { // without a name of its own
			v = &Value{Kind: Object, At: f.At(b)}
			e.viperFill(v, inner, f, prefix+key+".", depth+1)
		} else if sub, g := e.goStruct(b.Alias); sub != nil {
			v = e.viperFields(sub, g, prefix+key+".", depth+1)
		} else {
			v = e.viper(prefix+key, f.At(b))
			if isNumber(b.Alias) {
				v = op("wholenumber", true, f.At(b), op("||", true, f.At(b), v, number(0, f.At(b))))
			}
		}
		o.Keys, o.Kids = append(o.Keys, b.Kids[0].Name), append(o.Kids, v)
	}
}

// viper gives what viper has for a key: what is set, a flag that is given, a
// variable, the settings file, the default.
func (e *Eval) viper(key string, at place.Span) *Value {
	var set, flag, env, file, def *Value
	automatic, prefix, replaced := false, "", false
	names := []string{}
	configs := []string{}
	dirs := []string{}
	of := func(name string, visit func(site code.Site, args []*Value)) {
		for _, site := range e.calls(name) {
			if site.Scope.File.Lang != code.Go {
				continue
			}
			if b := e.Expr(site.Node.Kid(0).Kid(0), site.Scope); b.Kind != External || !strings.HasPrefix(Library(b.Text), "github.com/spf13/viper") {
				continue
			}
			args, _ := e.Arguments(site)
			visit(site, args)
		}
	}
	is := func(args []*Value) bool {
		return len(args) > 0 && args[0].Kind == Str && strings.EqualFold(args[0].Text, key)
	}
	of("Set", func(_ code.Site, args []*Value) {
		if is(args) && len(args) > 1 {
			set = args[1]
		}
	})
	of("SetDefault", func(_ code.Site, args []*Value) {
		if is(args) && len(args) > 1 {
			def = args[1]
		}
	})
	of("SetEnvPrefix", func(_ code.Site, args []*Value) {
		if len(args) > 0 {
			prefix = strings.ToUpper(args[0].literal())
		}
	})
	of("SetEnvKeyReplacer", func(code.Site, []*Value) { replaced = true })
	of("AutomaticEnv", func(code.Site, []*Value) { automatic = true })
	of("BindEnv", func(_ code.Site, args []*Value) {
		if is(args) {
			for _, a := range args[1:] {
				names = append(names, a.literal())
			}
			if len(args) == 1 {
				names = append(names, join(prefix, strings.ToUpper(key)))
			}
		}
	})
	of("BindPFlag", func(site code.Site, args []*Value) {
		if !is(args) {
			return
		}
		if look := site.Node.Kid(2); look.Is(code.Call) && look.Kid(1).Is(code.String) {
			flag = e.given([]string{"--" + look.Kids[1].Name})
			if def == nil {
				def = e.flagNamed(look.Kids[1].Name, at)
			}
		}
	})
	of("SetConfigFile", func(_ code.Site, args []*Value) {
		if len(args) > 0 {
			configs = append(configs, args[0].literal())
		}
	})
	of("AddConfigPath", func(_ code.Site, args []*Value) {
		if len(args) > 0 {
			dirs = append(dirs, args[0].literal())
		}
	})
	of("SetConfigName", func(_ code.Site, args []*Value) {
		if len(args) == 0 {
			return
		}
		for _, dir := range append(dirs, ".") {
			for _, end := range []string{".yaml", ".yml", ".json", ".toml"} {
				configs = append(configs, path.Join(dir, args[0].literal()+end))
			}
		}
	})
	of("ReadInConfig", func(code.Site, []*Value) {
		for _, c := range configs {
			n := e.Loader.Data(path.Join(e.Dir, c))
			for part := range strings.SplitSeq(key, ".") {
				var next *document.Node
				for _, k := range n.Items() {
					if strings.EqualFold(k.Key, part) {
						next = k
					}
				}
				n = next
			}
			if n != nil && file == nil {
				file = FromDocument(n)
			}
		}
	})
	if automatic && len(names) == 0 {
		name := join(prefix, strings.ToUpper(key))
		if replaced {
			name = strings.NewReplacer(".", "_", "-", "_").Replace(name)
		}
		names = append(names, name)
	}
	v := def
	if file != nil {
		v = file
	}
	if v == nil {
		v = text("", at)
	}
	for i := len(names) - 1; i >= 0; i-- { // an empty one counts as not set
		env = &Value{Kind: Env, Text: names[i], Unset: ReadsNull, At: at}
		v = op("||", true, at, env, v)
	}
	if flag != nil {
		v = flag
	}
	if set != nil {
		v = set
	}
	return v
}

// urfave is a flag of urfave/cli: what is given, its variables, its value.
func (e *Eval) urfave(name string, at place.Span) *Value {
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Go || f.Body == nil {
			continue
		}
		var found *code.Node
		f.Body.Walk(func(n *code.Node) bool {
			if n.Is(code.Object) && strings.HasSuffix(n.Alias, "Flag") && found == nil {
				for _, p := range n.Kids {
					if p.Is(code.Pair) && p.Name == "Name" && p.Kid(0).Is(code.String) && p.Kids[0].Name == name {
						found = n
					}
				}
			}
			return found == nil
		})
		if found == nil {
			continue
		}
		o := e.expr(found, f.Top, nil)
		flags := []string{"--" + name}
		for _, a := range o.Get("Aliases").kids() {
			flags = append(flags, map[bool]string{true: "-", false: "--"}[len(a.literal()) == 1]+a.literal())
		}
		number := strings.Contains(found.Alias, "Int") || strings.Contains(found.Alias, "Uint")
		v := e.given(flags)
		if v == nil {
			if v = o.Get("Value"); v == nil {
				v = text("", at)
				if number {
					v = &Value{Kind: Num, At: at}
				}
			}
			vars := o.Get("EnvVars").kids()
			if s := o.Get("Sources"); s != nil && s.Kind == External {
				vars = s.Kids
			}
			for i := len(vars) - 1; i >= 0; i-- {
				v = op("unset", true, at, &Value{Kind: Env, Text: vars[i].literal(), Unset: ReadsNull, At: at}, v)
			}
		}
		if number {
			return op("wholenumber", true, at, v)
		}
		return v
	}
	return unknown("the flag "+name, at)
}

func (v *Value) kids() []*Value {
	if v == nil {
		return nil
	}
	return v.Kids
}

// TaggedVariable is a variable that a field of a structure names in its tag.
type TaggedVariable struct{ Variable, Fallback *Value }

// TaggedVariables lists the variables that tags of a file of Go name, as
// caarlos0/env, cleanenv, go-envconfig and kong read them.
func TaggedVariables(f *code.File) []TaggedVariable {
	var list []TaggedVariable
	for _, cls := range f.Body.Kids {
		if !cls.Is(code.Class) {
			continue
		}
		for _, b := range cls.Kid(1).Kids {
			t := b.Kid(2)
			if !b.Is(code.Bind) || !t.Is(code.String) {
				continue
			}
			text, ok := tagged(t.Name, "env")
			name, options, _ := strings.Cut(text, ",")
			if !ok || name == "" || name == "-" {
				continue
			}
			at := f.At(b)
			x := TaggedVariable{Variable: &Value{Kind: Env, Text: name, Unset: ReadsNull, At: at}}
			if must, _ := tagged(t.Name, "env-required"); must == "true" || strings.Contains(options, "required") || strings.Contains(options, "notEmpty") {
				x.Variable.Unset = Raises
			}
			for _, key := range []string{"envDefault", "env-default", "default"} {
				if d, ok := tagged(t.Name, key); ok {
					x.Fallback = &Value{Kind: Str, Text: d, At: at}
				}
			}
			if _, d, ok := strings.Cut(options, "default="); ok {
				x.Fallback = &Value{Kind: Str, Text: d, At: at}
			}
			list = append(list, x)
		}
	}
	return list
}

// placed is a structure whose fields are given by their places; nil where its
// type is not of the tree.
func (e *Eval) placed(n *code.Node, s *code.Scope, c *context) *Value {
	cls, f := e.goStruct(n.Alias)
	if cls == nil {
		return nil
	}
	o := &Value{Kind: Object, Text: n.Alias, At: s.File.At(n)}
	for _, b := range cls.Kid(1).Kids {
		if i := len(o.Keys); b.Is(code.Bind) && b.Kid(0).Is(code.Name) && i < len(n.Kids) {
			o.Keys, o.Kids = append(o.Keys, b.Kids[0].Name), append(o.Kids, e.expr(n.Kids[i], s, c))
		}
	}
	if f == nil || len(o.Keys) != len(n.Kids) {
		return nil
	}
	return o
}
