package value

import (
	"strings"

	"ubique/core/code"
	"ubique/core/document"
	"ubique/core/place"
)

// dotnetCall evaluates what the class library of .NET does with the
// environment, settings, texts and numbers (.NET 10 API reference; ASP.NET
// Core, "Configuration"; read 2026-11); nil for any other call.
func (e *Eval) dotnetCall(n *code.Node, s *code.Scope, c *context) *Value {
	callee := n.Kid(0)
	at := s.File.At(n)
	arg := func(i int) *Value {
		if i+1 >= len(n.Kids) {
			return &Value{Kind: Null, At: at}
		}
		k := n.Kids[i+1]
		if k.Is(code.Keyword) {
			k = k.Kid(0)
		}
		return e.expr(k, s, c)
	}
	path := strings.TrimPrefix(callee.Dotted(), "System.")
	two := Tail(path, 2)
	switch two {
	case "Environment.GetEnvironmentVariable":
		return e.envNamed(arg(0), ReadsNull, at)
	case "int.Parse", "Int32.Parse", "ushort.Parse", "UInt16.Parse", "short.Parse", "long.Parse":
		return op("wholenumber", true, at, op("strip", true, at, arg(0)))
	case "Convert.ToInt32", "Convert.ToUInt16", "Convert.ToInt16":
		return op("wholenumber", true, at, op("??", true, at, arg(0), number(0, at)))
	case "int.TryParse", "Int32.TryParse", "ushort.TryParse", "UInt16.TryParse":
		return op("holds", true, at, op("catch", true, at, op("wholenumber", true, at, op("strip", true, at, arg(0))), &Value{Kind: Null, At: at}))
	case "string.IsNullOrEmpty", "String.IsNullOrEmpty":
		return op("empty", true, at, arg(0))
	case "string.IsNullOrWhiteSpace", "String.IsNullOrWhiteSpace":
		return op("blank", true, at, arg(0))
	case "bool.Parse":
		return op("truthy", true, at, arg(0))
	case "string.Format", "String.Format":
		if f := arg(0); f.Kind == Str {
			args := make([]*Value, 0, len(n.Kids))
			for i := 1; i < len(n.Kids)-1; i++ {
				args = append(args, dotnetText(arg(i)))
			}
			return braces(f.Text, args, nil, at)
		}
	case "string.Concat", "String.Concat":
		var parts []*Value
		for i := range len(n.Kids) - 1 {
			parts = append(parts, dotnetText(arg(i)))
		}
		return Concat(parts...)
	case "Math.Max", "Math.Min":
		return op(strings.ToLower(two[5:]), true, at, arg(0), arg(1))
	case "IPAddress.Parse":
		return arg(0)
	case "Environment.Exit", "Environment.FailFast":
		return &Value{Kind: Env, Text: "\x00", Unset: Raises, At: at}
	case "string.Equals", "String.Equals":
		return op("==", true, at, arg(0), arg(1))
	}
	if n.Is(code.New) && strings.HasSuffix(path, "IPEndPoint") && len(n.Kids) == 3 {
		return &Value{Kind: List, At: at, Kids: []*Value{arg(0), arg(1)}}
	}
	if n.Is(code.New) && (path == "Uri" || path == "UriBuilder" && len(n.Kids) == 2) {
		return arg(0)
	}
	if !callee.Is(code.Member) {
		return nil
	}
	switch callee.Name {
	case "GetValue":
		if key, ok := e.configuration(callee.Kid(0), s, c); ok && arg(0).Kind == Str {
			v := e.setting(key+arg(0).Text, at)
			if len(n.Kids) > 2 {
				v = op("??", true, at, v, arg(1))
			}
			return op("dotnetvalue", true, at, v)
		}
	case "GetSection", "GetRequiredSection":
		if key, ok := e.configuration(callee.Kid(0), s, c); ok && arg(0).Kind == Str {
			return &Value{Kind: External, Text: "configuration " + key + arg(0).Text + ":", At: at}
		}
	case "GetConnectionString":
		if key, ok := e.configuration(callee.Kid(0), s, c); ok && arg(0).Kind == Str {
			return e.setting(key+"ConnectionStrings:"+arg(0).Text, at)
		}
	case "Get":
		if v := e.expr(callee.Kid(0), s, c); v.Kind == External && strings.HasPrefix(v.Text, "configuration ") {
			return v
		}
	case "IsDevelopment", "IsProduction", "IsStaging", "IsEnvironment":
		name := strings.TrimPrefix(callee.Name, "Is")
		if name == "Environment" {
			name = arg(0).literal()
		}
		return op("==", true, at, op("lower", true, at, hostEnvironment(at)), text(strings.ToLower(name), at))
	case "ToString", "ToLowerInvariant", "ToLower", "ToUpperInvariant", "Trim", "Equals", "StartsWith", "EndsWith", "Contains", "Replace", "Substring":
		b := e.expr(callee.Kid(0), s, c)
		switch callee.Name {
		case "ToString":
			return dotnetText(b)
		case "ToLowerInvariant", "ToLower":
			return op("lower", true, at, b)
		case "ToUpperInvariant":
			return op("upper", true, at, b)
		case "Trim":
			return op("strip", true, at, b)
		case "StartsWith":
			return op("startswith", true, at, b, arg(0))
		case "EndsWith", "Contains", "Replace", "Substring":
			args, _ := e.args(n, s, c)
			return textCall(callee.Name, append([]*Value{b}, args...), code.CSharp, at)
		}
		if len(n.Kids) > 2 && strings.Contains(s.File.Text(n.Kids[2]), "IgnoreCase") {
			return op("==", true, at, op("lower", true, at, b), op("lower", true, at, arg(0)))
		}
		return op("==", true, at, b, arg(0))
	}
	return nil
}

// dotnetText is a value as a part of a text: nothing is empty.
func dotnetText(v *Value) *Value {
	if v.Kind == Str || v.Kind == Num || v.Kind == External || v.Kind == Unknown {
		return v
	}
	return op("astext", true, v.At, v)
}

// hostEnvironment is what the program is run for.
func hostEnvironment(at place.Span) *Value {
	return EnvOr("ASPNETCORE_ENVIRONMENT", EnvOr("DOTNET_ENVIRONMENT", text("Production", at), at), at)
}

// configuration reports whether an expression is the application's
// configuration, and the section of it that it stands for.
func (e *Eval) configuration(n *code.Node, s *code.Scope, c *context) (string, bool) {
	name := n.Dotted()
	switch last := Tail(name, 1); strings.ToLower(strings.TrimPrefix(last, "_")) {
	case "configuration", "config", "configurationmanager":
		return "", true
	}
	v := e.expr(n, s, c)
	if key, ok := strings.CutPrefix(v.Text, "configuration "); ok && v.Kind == External {
		return key, true
	}
	return "", false
}

// setting gives a value of the configuration by its key, A:B. What counts, the
// first that is there: an argument, a variable A__B, the settings file of the
// environment, appsettings.json (ASP.NET Core, "Configuration", section
// "Default application configuration sources").
func (e *Eval) setting(key string, at place.Span) *Value {
	flags := []string{"--" + key, "/" + key, "--" + strings.ReplaceAll(key, ":", "__")}
	for _, a := range e.Args { // names count in any letter case
		if k, rest, ok := strings.Cut(a.literal(), "="); ok && (strings.EqualFold(k, flags[0]) || strings.EqualFold(k, key)) {
			return text(rest, a.At)
		}
	}
	if v := e.given(flags); v != nil {
		return v
	}
	v := e.settingIn("appsettings.json", key)
	for _, env := range []string{"Development", "Staging", "Production"} {
		if w := e.settingIn("appsettings."+env+".json", key); w != nil {
			other := v
			if other == nil {
				other = &Value{Kind: Null, At: at}
			}
			v = &Value{Kind: Cond, Py: true, At: w.At, Kids: []*Value{op("==", true, at, op("lower", true, at, hostEnvironment(at)), text(strings.ToLower(env), at)), w, other}}
		}
	}
	out := EnvOr(strings.ReplaceAll(key, ":", "__"), v, at)
	out.Kids[0].Fold = true
	return out
}

// Setting gives a value of the configuration of an ASP.NET Core application.
func Setting(e *Eval, key string, at place.Span) *Value { return e.setting(key, at) }

// Either is a value, and another where it is nothing.
func Either(v, other *Value, at place.Span) *Value { return op("??", true, at, v, other) }

// Prefixed puts a text before a value, where it is not nothing.
func Prefixed(prefix string, v *Value, at place.Span) *Value {
	return &Value{Kind: Cond, Py: true, At: at, Kids: []*Value{op("nothing", true, at, v), &Value{Kind: Null, At: at}, Concat(text(prefix, at), v)}}
}

func (e *Eval) settingIn(file, key string) *Value {
	n := e.Loader.Data(joined2(e.Dir, file))
	for part := range strings.SplitSeq(key, ":") {
		if n == nil || n.Kind != document.Map {
			return nil
		}
		var next *document.Node
		for _, k := range n.Kids {
			if strings.EqualFold(k.Key, part) {
				next = k
			}
		}
		n = next
	}
	if n == nil {
		return nil
	}
	v := FromDocument(n)
	return v.with(Step{v.At, file})
}

// dotnetName gives the constants of addresses, the arguments, settings by
// their key, and classes of other files; nil for any other.
func (e *Eval) dotnetMember(n *code.Node, s *code.Scope, c *context) *Value {
	at := s.File.At(n)
	path := n.Dotted()
	switch Tail(path, 2) {
	case "IPAddress.Any":
		return text("0.0.0.0", at)
	case "IPAddress.IPv6Any":
		return text("::", at)
	case "IPAddress.Loopback":
		return text("127.0.0.1", at)
	case "IPAddress.IPv6Loopback":
		return text("::1", at)
	case "string.Empty", "String.Empty":
		return text("", at)
	case "args.Length":
		return e.argumentCount(at)
	case "Environment.EnvironmentName", "env.EnvironmentName":
		return hostEnvironment(at)
	}
	base := e.expr(n.Kid(0), s, c)
	if key, ok := strings.CutPrefix(base.Text, "configuration "); ok && base.Kind == External { // an object that a section is put into
		return op("dotnetvalue", true, at, e.setting(key+n.Name, at))
	}
	if n.Name == "Length" && (base.Kind == Env || base.Kind == Str || base.Kind == Op || base.Kind == List) {
		return op("length", true, at, base)
	}
	return nil
}
