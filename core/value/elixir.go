package value

import (
	"strings"

	"ubique/core/code"
	"ubique/core/place"
)

// elixirCall evaluates what Elixir does with the environment, settings, texts
// and numbers (Elixir 1.19: System, String, Integer, Keyword, Application;
// read 2026-11); nil for any other call.
func (e *Eval) elixirCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	arg := func(i int) *Value {
		if i+1 < len(n.Kids) {
			return e.expr(n.Kids[i+1], s, c)
		}
		return &Value{Kind: Null, At: at}
	}
	key := func(i int) string { // an atom, as a text
		v := arg(i)
		return v.literal()
	}
	path := callee.Dotted()
	switch path {
	case "System.get_env":
		if len(n.Kids) < 2 {
			return &Value{Kind: EnvMap, Unset: ReadsNull, At: at}
		}
		v := e.envNamed(arg(0), ReadsNull, at)
		if len(n.Kids) > 2 {
			return op("unset", true, at, v, arg(1))
		}
		return v
	case "System.fetch_env!", "System.fetch_env":
		return e.envNamed(arg(0), Raises, at)
	case "String.to_integer", "Integer.parse": // the second with the rest beside it
		return op("wholenumber", true, at, arg(0))
	case "String.to_atom", "String.to_existing_atom", "to_string", "String.Chars.to_string", "String.to_charlist", "to_charlist", "Integer.to_string", "List.to_string":
		return arg(0)
	case "String.trim":
		return op("strip", true, at, arg(0))
	case "String.downcase":
		return op("lower", true, at, arg(0))
	case "String.ends_with?", "String.starts_with?", "String.contains?", "String.replace", "String.trim_leading", "String.trim_trailing":
		if len(n.Kids) > 2 {
			args, _ := e.args(n, s, c)
			return textCall(path, args, code.Elixir, at)
		}
		return op("strip", true, at, arg(0))
	case "String.upcase":
		return op("upper", true, at, arg(0))
	case "is_nil":
		return op("nothing", true, at, arg(0))
	case "System.halt", "exit", "raise", "throw", "System.stop":
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	case "config_env", "Mix.env":
		return MixEnv(e, at)
	case "Application.get_env", "Application.compile_env":
		if v := e.applied(key(1), at); v != nil {
			return v
		}
		if len(n.Kids) > 3 {
			return arg(2)
		}
		return unknown("the setting "+key(1), at)
	case "Application.fetch_env!", "Application.compile_env!":
		if v := e.applied(key(1), at); v != nil {
			return v
		}
		return unknown("the setting "+key(1), at)
	case "Keyword.get", "Map.get", "Keyword.fetch!", "Map.fetch!", "Access.get":
		b, k := arg(0), key(1)
		if b.Kind == EnvMap {
			return e.envNamed(text(k, at), ReadsNull, at)
		}
		if v := b.Get(k); v != nil {
			return v
		}
		if len(n.Kids) > 3 && (b.Kind == Object || b.Kind == List && len(b.Kids) == 0) {
			return arg(2)
		}
		return unknown("the option "+k, at)
	case "Keyword.merge", "Map.merge":
		o := &Value{Kind: Object, At: at}
		o.spread(arg(0), false)
		o.spread(arg(1), false)
		return o
	case "elem":
		if b, i := arg(0), arg(1); b.Kind == Op && i.Num == 0 {
			return b
		} else if b.Kind == List && i.Kind == Num && int(i.Num) < len(b.Kids) && i.Num >= 0 {
			return b.Kids[int(i.Num)]
		}
	case "max", "min":
		return op(path, true, at, arg(0), arg(1))
	case "System.argv":
		return &Value{Kind: External, Text: "main.args", At: at}
	case "List.first":
		if b := arg(0); b.Kind == External && b.Text == "main.args" {
			if len(e.Args) > 0 {
				return e.Args[0]
			}
			return &Value{Kind: Null, At: at}
		}
	}
	fn, module := path, ""
	if i := strings.LastIndexByte(path, '.'); i >= 0 {
		module, fn = path[:i], path[i+1:]
	}
	if module == "__MODULE__" {
		module = ""
	}
	if path == "" {
		return nil
	}
	find := func(f *code.File, cls *code.Node) *Value {
		for _, m := range cls.Kid(1).Kids {
			if !m.Is(code.Func) || m.Name != fn || len(m.Kid(0).Kids) < len(n.Kids)-1 {
				continue
			}
			scope := f.Top
			if inside := f.Funcs[m]; inside != nil && inside.Parent != nil {
				scope = inside.Parent
			}
			args, keys := e.args(n, s, c)
			if len(keys) > 0 {
				o := &Value{Kind: Object, At: at}
				for k, v := range keys {
					o.Keys, o.Kids = append(o.Keys, k), append(o.Kids, v)
				}
				args = append(args, o)
			}
			return e.invoke(&Value{Kind: Func, Text: fn, At: f.At(m), ref: &ref{file: f, node: m, scope: scope}}, args, nil, c)
		}
		return nil
	}
	if module == "" {
		if s.Class != nil {
			return find(s.File, s.Class)
		}
		return nil
	}
	for _, f := range e.Loader.Loaded() {
		if f.Lang != code.Elixir {
			continue
		}
		for name, cls := range f.Classes {
			if name == module || strings.HasSuffix(name, "."+module) {
				if v := find(f, cls); v != nil {
					return v
				}
			}
		}
	}
	return nil
}

// MixEnv is the environment a program of Elixir is built for: prod in a
// release.
func MixEnv(e *Eval, at place.Span) *Value {
	if e.Released {
		return text("prod", at)
	}
	return EnvOr("MIX_ENV", text("dev", at), at)
}

// applied gives a setting of the application by its key, from the files of
// config/ in the order in which they count: config.exs, that of the
// environment, runtime.exs (Elixir, "Config").
func (e *Eval) applied(key string, at place.Span) *Value {
	var v *Value
	for _, f := range e.Configs() {
		for _, site := range f.File.Calls {
			if fn := site.Node.Kid(0); !fn.Is(code.Name) || fn.Name != "config" {
				continue
			}
			for _, a := range site.Node.Args() {
				if a.Is(code.Keyword) && a.Name == key {
					v = f.Put(e, site, e.Expr(a.Kid(0), site.Scope), v)
				}
			}
		}
	}
	return v
}

// Config is a file of settings of Elixir, with the condition under which it
// counts; nil for always.
type Config struct {
	File *code.File
	When *Value
}

// Configs lists the files of settings in the order in which they count.
func (e *Eval) Configs() []Config {
	var list []Config
	env := func(name string) *Value { return MixEnv(e, place.Whole(name)) }
	for _, c := range []struct{ file, env string }{{"config.exs", ""}, {"dev.exs", "dev"}, {"prod.exs", "prod"}, {"runtime.exs", ""}} {
		name := joined2(e.Dir, "config/"+c.file)
		f := e.Loader.File(name)
		if f == nil || f.Body == nil {
			continue
		}
		x := Config{File: f}
		if c.env != "" {
			x.When = op("==", true, f.At(f.Body), env(name), text(c.env, f.At(f.Body)))
		}
		list = append(list, x)
	}
	return list
}

// Put sets a value over another where the file and the call count.
func (x Config) Put(e *Eval, site code.Site, v, old *Value) *Value {
	if old == nil {
		old = &Value{Kind: Null, At: v.At}
	}
	v = v.with(Step{x.File.At(site.Node), x.File.Text(site.Node)})
	for i := len(site.Guards) - 1; i >= 0; i-- {
		v = &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{e.Guard(site.Guards[i]), v, old}}
	}
	if x.When != nil {
		v = &Value{Kind: Cond, Py: true, At: v.At, Kids: []*Value{x.When, v, old}}
	}
	return v
}

// ElixirIP makes an interface of an address of Erlang: {0, 0, 0, 0}, :any,
// :loopback.
func ElixirIP(v *Value) *Value {
	switch {
	case v == nil:
		return nil
	case v.Kind == Str && (v.Text == "any" || v.Text == "loopback"):
		return text(map[string]string{"any": "0.0.0.0", "loopback": "127.0.0.1"}[v.Text], v.At)
	case v.Kind == List && len(v.Kids) == 4:
		return rustIP(v, v.At)
	case v.Kind == List && len(v.Kids) == 8:
		for i, k := range v.Kids {
			if k.Kind != Num || k.Num != 0 && i < 7 {
				return unknown("an address of IPv6", v.At)
			}
		}
		if v.Kids[7].Num == 1 {
			return text("::1", v.At)
		}
		return text("::", v.At)
	case v.Kind == List && len(v.Kids) == 2 && v.Kids[0].literal() == "local":
		return v.Kids[1]
	case v.Kind == Cond:
		return &Value{Kind: Cond, Py: v.Py, At: v.At, Steps: v.Steps, Kids: []*Value{v.Kids[0], ElixirIP(v.Kids[1]), ElixirIP(v.Kids[2])}}
	}
	return v
}
