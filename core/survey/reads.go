package survey

import (
	"bytes"
	"maps"
	"math"
	"regexp"
	"slices"
	"sort"
	"strings"
	"sync"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/trace"
	"ubique/core/value"
)

// Variables lists the environment variables that files read, with the
// fallback where the same expression has one.
func Variables(e *value.Eval, files []*code.File) []fact.Variable {
	var list []fact.Variable
	seen := map[string]bool{}
	for _, f := range files {
		if f.Skimmed || !mentionsEnvironment(f.Src) {
			continue
		}
		scopes := scopesOf(f)
		var visit func(n *code.Node, s *code.Scope, fallback *code.Node, tested bool)
		asks, insisted := inquired(f), demanded(f)
		var guards []*value.Value
		must := false // the program ends without it
		add := func(v *value.Value, fallback *value.Value, tested bool) {
			at := v.At
			if at.File == "" || at.Line == 0 || strings.ContainsRune(v.Text, 0) || f.Lang == code.Python && dictionary[v.Text] {
				return
			}
			key := at.String() + v.Text
			if seen[key] {
				return
			}
			seen[key] = true
			x := fact.Variable{Name: v.Text, At: at, Required: v.Unset == value.Raises || must, Tested: tested, Guards: guards[:len(guards):len(guards)]}
			if fallback != nil {
				x.HasFall, x.Required = true, false
				x.Fallback = Shown(x.Name, fallback)
			}
			if tested {
				x.Required = false
			}
			list = append(list, x)
		}
		// named goes through what a name is set to: the name may be insisted
		// on, or asked about, later.
		named := func(n *code.Node, s *code.Scope, fallback *code.Node, tested bool) bool {
			name := target(n.Kid(0))
			if name == "" || n.Kid(1) == nil {
				return false
			}
			saved := must
			must = must || insisted[name] && !asks[name]
			visit(n.Kid(1), s, fallback, tested || asks[name])
			must = saved
			return true
		}
		among := func(list *code.Node, s *code.Scope) { // what is nothing is left out, but a read that fails ends all
			for _, k := range list.Kids {
				env, _ := asRead(e.Expr(k, s))
				visit(k, s, nil, env == nil || env.Unset != value.Raises)
			}
		}
		visit = func(n *code.Node, s *code.Scope, fallback *code.Node, tested bool) {
			if n == nil {
				return
			}
			if inner, ok := scopes[n]; ok {
				s = inner
			}
			switch n.Kind {
			case code.Binary:
				switch n.Name {
				case "==", "===", "!=", "!==", "in", "not in", "instanceof":
					// What is compared may be missing: it is then another.
					visit(n.Kid(0), s, nil, true)
					visit(n.Kid(1), s, nil, true)
					return
				}
				if (n.Name == "||" || n.Name == "??" || n.Name == "or") && ends(n.Kid(1)) {
					saved := must
					must = true
					visit(n.Kids[0], s, nil, false)
					must = saved
					return
				}
				if n.Name == "&&" { // the right side is for where there is one
					visit(n.Kid(0), s, nil, !must)
					visit(n.Kid(1), s, fallback, tested)
					return
				}
				if (n.Name == "||" || n.Name == "??") && n.Kid(1) != nil {
					visit(n.Kids[0], s, n.Kids[1], tested)
					visit(n.Kids[1], s, fallback, tested)
					return
				}
			case code.Unary:
				if n.Name == "!" || n.Name == "not" {
					visit(n.Kid(0), s, nil, !must)
					return
				}
			case code.Array:
				if n.Alias == code.Whole { // its value is made of the same nodes
					visit(n.Kid(0), s, fallback, tested)
					return
				}
			case code.If, code.Cond:
				must = n.Is(code.If) && insists(n)
				visit(n.Kid(0), s, nil, !must)
				must = false
				before := len(guards)
				for i, k := range n.Kids[1:] {
					if k != nil && len(guards) < 8 {
						guards = append(guards[:before:before], e.Guard(code.Guard{Test: n.Kid(0), Not: i == 1, Scope: s}))
					}
					visit(k, s, fallback, tested)
					guards = guards[:before]
				}
				return
			case code.Try: // what is missing is caught
				visit(n.Kid(0), s, fallback, true)
				for _, k := range n.Kids[min(1, len(n.Kids)):] {
					visit(k, s, fallback, tested)
				}
				return
			case code.Assign:
				if named(n, s, fallback, tested) {
					return
				}
			case code.Comp:
				if list := n.Kid(2); strings.HasPrefix(n.Name, "fi") && list.Is(code.Array) { // what passes a condition
					among(list, s)
					visit(n.Kids[0], s, nil, false)
					for _, k := range n.Kids[3:] {
						visit(k, s, nil, false)
					}
					return
				}
			case code.Member, code.Index, code.Call:
				if n.Flag&code.OptionalOp != 0 && !couldRead(n) { // it goes on without
					visit(n.Kid(0), s, fallback, !must)
					for _, k := range n.Kids[1:] {
						visit(k, s, nil, false)
					}
					return
				}
				if n.Kind == code.Call && (weighs(n, f.Lang) || offered(e, n, s)) {
					for _, a := range n.Args() {
						visit(a, s, nil, true)
					}
					return
				}
				if list := n.Kid(0); n.Kind == code.Member && picks[n.Name] && list.Is(code.Array) && list.Alias != code.Whole {
					among(list, s)
					return
				}
				if callee := n.Kid(0); n.Kind == code.Call && callee.Is(code.Member) && (fallbacks[callee.Name] || falls[callee.Name]) && callee.Kid(0).Is(code.Call) {
					other, asked := fallback, tested
					if falls[callee.Name] {
						asked = true
					} else if n.Kid(1) != nil {
						if other = n.Kids[1]; other.Is(code.Func) {
							other = result(other)
						}
					}
					visit(callee.Kids[0], s, other, asked)
					for _, a := range n.Args() {
						visit(a, s, nil, false)
					}
					return
				}
				if callee := n.Kid(0); n.Kind == code.Call && f.Lang == code.Rust && (fallback != nil || tested) && callee.Is(code.Member) && callee.Kid(0).Is(code.Call) && !couldRead(n) && callee.Name != "unwrap" && callee.Name != "expect" {
					visit(callee.Kids[0], s, fallback, tested) // a result goes on
					for _, a := range n.Args() {
						visit(a, s, nil, false)
					}
					return
				}
				if n.Kind == code.Call && f.Lang == code.Go && n.Kid(0).Dotted() == "cmp.Or" { // the first that is not empty
					for i, a := range n.Args() {
						next := fallback
						if i+2 < len(n.Kids) {
							next = n.Kids[i+2]
						}
						visit(a, s, next, tested)
					}
					return
				}
				if callee := n.Kid(0); n.Kind == code.Call && f.Lang == code.Java && callee.Is(code.Member) && nothingToo[callee.Name] {
					visit(callee.Kids[0], s, nil, false)
					for _, a := range n.Args() {
						visit(a, s, nil, true)
					}
					return
				}
				if callee := n.Kid(0); n.Kind == code.Call && (callee.Is(code.Name) || callee.Is(code.Member)) && demands[callee.Name] {
					saved := must
					must = true
					for _, a := range n.Args() {
						visit(a, s, nil, false)
					}
					must = saved
					return
				}
				if couldRead(n) {
					v := e.Expr(n, s)
					if env, def := asRead(v); env != nil {
						tested := tested || v.Kind == value.Op && v.Text == "isset" || n.Kind == code.Call && strings.HasSuffix(n.Kid(0).Dotted(), "LookupEnv")
						if def == nil && fallback != nil {
							def = e.Expr(fallback, s)
						}
						add(env, def, tested)
						for _, a := range n.Args() {
							if n.Kind == code.Call {
								visit(a, s, nil, false)
							}
						}
						return
					}
				}
			case code.Bind:
				if named(n, s, fallback, tested) {
					return
				}
				// const { PORT = 3000 } = process.env
				if n.Kid(0).Is(code.Object) && n.Kid(1) != nil {
					if v := e.Expr(n.Kids[1], s); v.Kind == value.EnvMap {
						for _, p := range n.Kids[0].Kids {
							if !p.Is(code.Pair) {
								continue
							}
							env := value.Variable(p.Name, value.ReadsUndef, f.At(p))
							var def *value.Value
							if p.Kid(0).Is(code.Assign) {
								def = e.Expr(p.Kids[0].Kid(1), s)
							}
							add(env, def, false)
						}
					}
				}
			}
			conv := n.Kind == code.Call || n.Kind == code.Unary || n.Kind == code.Await
			for _, k := range n.Kids {
				if conv {
					visit(k, s, fallback, tested)
				} else {
					visit(k, s, nil, tested && n.Kind == code.Unary)
				}
			}
		}
		visit(f.Body, f.Top, nil, false)
		if f.Lang == code.Go && !bytes.Contains(f.Src, []byte("Prefix:")) && !bytes.Contains(f.Src, []byte("env-prefix")) {
			for _, x := range value.TaggedVariables(f) { // env:"NAME" of a structure
				add(x.Variable, x.Fallback, x.Variable.Unset != value.Raises)
			}
		}
		for _, cls := range f.Classes { // settings classes
			for _, env := range e.SettingsClass(f, cls) {
				x, def := asRead(env)
				if x != nil {
					add(x, def, false)
				}
			}
		}
	}
	if made := handed(files); len(made) > 0 {
		list = slices.DeleteFunc(list, func(v fact.Variable) bool { return made[v.Name] })
	}
	sort.SliceStable(list, func(i, j int) bool { return list[i].At.Before(list[j].At) })
	return list
}

// processMakers are the calls that make a process, or a thread with an environment of its own
// (Node.js 24, "cluster", "child_process", "worker_threads"; Python 3.14, "subprocess").
var processMakers = words("fork spawn spawnSync exec execSync execFile execFileSync Worker Popen run check_call check_output")

// handed are the variables that the program sets for processes that it makes.
func handed(files []*code.File) map[string]bool {
	made := map[string]bool{}
	keys := func(o *code.Node) {
		if !o.Is(code.Object) {
			return
		}
		for _, p := range o.Kids {
			if p.Is(code.Pair) && p.Name != "" {
				made[p.Name] = true
			}
		}
	}
	for _, f := range files {
		if f.Skimmed {
			continue
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !callee.Is(code.Name) && !callee.Is(code.Member) || !processMakers[callee.Name] {
				continue
			}
			for i, a := range site.Node.Args() {
				switch {
				case i == 0 && callee.Name == "fork":
					keys(a)
				case a.Is(code.Keyword) && a.Name == "env":
					keys(a.Kid(0))
				case a.Is(code.Object):
					for _, p := range a.Kids {
						if p.Is(code.Pair) && p.Name == "env" {
							keys(p.Kid(0))
						}
					}
				}
			}
		}
	}
	return made
}

// offered reports whether a call hands what it reads to a function of the tree that has
// more parameters: it may be given what counts instead, int(env.SIZE, 60). Going through
// the program tells whether that ends without it.
func offered(e *value.Eval, n *code.Node, s *code.Scope) bool {
	args := n.Args()
	if len(args) == 0 || !trace.Follows(s.File.Lang) || !slices.ContainsFunc(args, couldRead) || !n.Kid(0).Is(code.Name) && !n.Kid(0).Is(code.Member) {
		return false
	}
	return e.Expr(n.Kid(0), s).Parameters() > 1
}

// weighs reports whether a call only asks what a text says, so that nothing is an
// answer too: conversions to a truth value, and those of Go, which give an error.
func weighs(n *code.Node, l code.Language) bool {
	switch name := n.Kid(0).Dotted(); {
	case l == code.Go:
		return strings.HasPrefix(name, "strconv.Parse") || name == "strconv.Atoi"
	case l == code.Python:
		return name == "bool"
	case l == code.PHP:
		if name == "boolval" {
			return true
		}
		return name == "filter_var" && slices.ContainsFunc(n.Args(), func(a *code.Node) bool { return strings.HasPrefix(a.Dotted(), "FILTER_VALIDATE_BOOL") })
	case l == code.JavaScript || l == code.TypeScript || l == code.JSX:
		return name == "Boolean"
	}
	return false
}

// result is what a function without a name gives: its expression, or its last
// one; nil where that is not told so easily.
func result(fn *code.Node) *code.Node {
	body := fn.Kid(1)
	if body.Is(code.Block) {
		if len(body.Kids) == 0 {
			return nil
		}
		if body = body.Kids[len(body.Kids)-1]; body.Is(code.ExprStmt) || body.Is(code.Return) {
			body = body.Kid(0)
		}
	}
	if body == nil {
		return fn
	}
	return body
}

func scopesOf(f *code.File) map[*code.Node]*code.Scope {
	m := make(map[*code.Node]*code.Scope, len(f.Funcs)+len(f.Inside))
	for n, s := range f.Funcs {
		m[n] = s
	}
	for n, s := range f.Inside {
		m[n] = s
	}
	return m
}

// mentionsEnvironment is the cheap scan before anything is evaluated.
func mentionsEnvironment(src []byte) bool {
	return bytes.Contains(src, []byte("env")) || bytes.Contains(src, []byte("ENV")) || bytes.Contains(src, []byte("GetEnv")) || bytes.Contains(src, []byte("config")) || bytes.Contains(src, []byte("Settings"))
}

func couldRead(n *code.Node) bool {
	switch n.Kind {
	case code.Member:
		d := n.Kid(0).Dotted()
		return d == "process.env" || d == "env" || strings.HasSuffix(d, ".env")
	case code.Index:
		d := n.Kid(0).Dotted()
		switch value.Tail(d, 1) {
		case "ENV", "$_ENV":
			return true
		case "$_SERVER":
			return n.Kid(1).Is(code.String) && !ofRequest(n.Kids[1].Name)
		case "Configuration", "configuration", "_configuration":
			return n.Kid(1).Is(code.String) && n.Kids[1].Name == strings.ToUpper(n.Kids[1].Name) && !strings.Contains(n.Kids[1].Name, ":")
		}
		return strings.HasSuffix(d, "env") || strings.HasSuffix(d, "environ")
	case code.Call:
		callee := n.Kid(0)
		if callee.Is(code.Member) && callee.Kid(0).Is(code.Call) && callee.Kids[0].Kid(0).Is(code.Member) && callee.Kids[0].Kids[0].Name == "getenv" && len(callee.Kids[0].Kids) == 1 {
			return true // System.getenv().get("X")
		}
		name := callee.Dotted()
		if i := strings.LastIndexByte(name, '.'); i >= 0 {
			base := name[:i]
			name = name[i+1:]
			return readers[name] || base == "ENV" || strings.HasSuffix(base, "environ") || strings.HasSuffix(base, "env") || base == "config"
		}
		return readers[name] || name == "config" || name == "env"
	}
	return false
}

// readers are the names of functions that read a variable, in all languages.
var readers = map[string]bool{"getenv": true, "Getenv": true, "LookupEnv": true, "GetEnvironmentVariable": true, "get_env": true, "fetch_env!": true, "fetch_env": true}

// ofRequest tells what $_SERVER of PHP holds of a request and of the server
// (PHP manual, "$_SERVER").
func ofRequest(name string) bool {
	for _, p := range []string{"HTTP_", "SERVER_", "REQUEST_", "REMOTE_", "SCRIPT_", "PATH_", "DOCUMENT_", "CONTENT_", "PHP_", "AUTH_", "GATEWAY_", "ORIG_", "REDIRECT_", "SSL_", "QUERY_STRING", "HTTPS", "argv", "argc"} {
		if strings.HasPrefix(name, p) {
			return true
		}
	}
	return false
}

// fallbacks are methods that put something in the place of a value that is not
// there; falls are those that only ask for it or go on without (Rust:
// std::result and std::option; Java: Optional; Kotlin: takeIf).
var fallbacks = map[string]bool{"unwrap_or": true, "unwrap_or_else": true, "or": true, "or_else": true, "map_or": true, "map_or_else": true, "orElse": true, "orElseGet": true}
var falls = map[string]bool{"ok": true, "is_ok": true, "is_err": true, "is_some": true, "is_none": true, "unwrap_or_default": true, "ifPresent": true, "isPresent": true, "isEmpty": true, "is_ok_and": true, "is_some_and": true}

// picks are methods of a list that take what is there of it: what is nothing may
// stand in it (Ruby 3.4: Array, Enumerable; ECMAScript 2026, "Array.prototype").
var picks = map[string]bool{"compact": true, "find": true, "detect": true, "select": true, "filter": true, "filter_map": true, "reject": true, "any?": true, "any": true, "some": true, "every": true, "all?": true}

// demands are calls that end the program where their argument is nothing.
var demands = map[string]bool{"requireNonNull": true, "checkNotNull": true, "requireNotNull": true, "ThrowIfNull": true, "ThrowIfNullOrEmpty": true, "ThrowIfNullOrWhiteSpace": true}

// ends reports whether an expression that stands for a missing value ends the
// program: x ?? throw …, ENV["X"] or raise, x ?: error("…").
func ends(n *code.Node) bool {
	if n.Is(code.Throw) {
		return true
	}
	if c := n.Kid(0); n.Is(code.Call) && (c.Is(code.Name) || c.Is(code.Member)) {
		return endings[c.Name] || c.Is(code.Name) && raises[c.Name]
	}
	return false
}

// raises are calls that end the program, or raise an error, in languages in
// which they look like any other.
var raises = map[string]bool{"raise": true, "fail": true, "error": true, "bail": true, "exit!": true, "unreachable": true, "todo": true, "throw": true, "halt": true}

// nothingToo are the methods of Java that take what is not set, and say no (Java SE
// 21, java.lang.Boolean, java.lang.String, java.util.Objects).
var nothingToo = words("parseBoolean equals equalsIgnoreCase nonNull isNull")

// dictionary are the methods of a dictionary of Python, which are no variables of the
// environment that is one.
var dictionary = words("get items keys values copy update pop popitem setdefault clear")

// asRead takes a value apart that is one variable, perhaps with a fallback
// and conversions around it.
func asRead(v *value.Value) (env, def *value.Value) {
	for depth := 0; v != nil && depth < 8; depth++ {
		switch {
		case v.Kind == value.Env:
			return v, nil
		case v.Kind == value.Op && (v.Text == "unset" || v.Text == "||" || v.Text == "??") && len(v.Kids) == 2:
			if env, _ = asRead(v.Kids[0]); v.Text == "unset" && (v.Kids[1].Kind == value.Bool && code.LanguageOf(v.At.File) == code.PHP || v.Kids[1].Kind == value.Undef) {
				return env, nil // PHP says false where it is not set
			}
			return env, v.Kids[1]
		case v.Kind == value.Op && (len(v.Kids) == 1 || v.Text == "int"):
			v = v.Kids[0]
		default:
			return nil, nil
		}
	}
	return nil, nil
}

// Shown is a fallback as it may be shown: never the text of what looks like a
// secret.
func Shown(name string, v *value.Value) string {
	o := v.Under(value.Environ{})
	if SecretName(name) || strings.Contains(o.Text, "@") && strings.Contains(o.Text, "://") {
		if o.Kind == value.Str && o.Text != "" {
			return "(not shown)"
		}
	}
	switch o.Kind {
	case value.Str:
		return o.Text
	case value.Num:
		if math.IsNaN(o.Num) {
			return "NaN"
		}
		return o.String()
	case value.Bool, value.Null, value.Undef:
		return o.String()
	}
	return "(computed)"
}

// secretWords are the words at the end of names that hold secrets.
var secretWords = map[string]bool{
	"secret": true, "password": true, "passwd": true, "passphrase": true, "secretkey": true, "apikey": true, "privatekey": true, "accesskey": true,
	"authtoken": true, "accesstoken": true, "apitoken": true, "bottoken": true, "refreshtoken": true, "clientsecret": true, "signingkey": true, "encryptionkey": true,
	"jwtsecret": true, "sessionsecret": true, "cookiesecret": true, "masterkey": true, "sharedsecret": true, "appsecret": true, "dbpassword": true, "jwtkey": true, "hmackey": true, "pwd": false,
}

// SecretName tells names that hold a secret by their last words: SECRET_KEY,
// jwtSecret, DB_PASSWORD. Names of fields, headers, files or addresses of
// secrets end in other words.
func SecretName(name string) bool {
	if !mayBeSecret(name) {
		return false
	}
	words := splitName(name)
	for take := 1; take <= 3 && take <= len(words); take++ {
		if secretWords[strings.Join(words[len(words)-take:], "")] {
			return true
		}
	}
	return false
}

// mayBeSecret is the cheap look before a name is taken apart: every entry of
// the table ends in one of these letters pairs.
func mayBeSecret(name string) bool {
	if len(name) < 6 {
		return false
	}
	switch strings.ToLower(name[len(name)-2:]) {
	case "et", "rd", "wd", "se", "ey", "en":
		return true
	}
	return false
}

func splitName(name string) []string {
	var words []string
	cur := ""
	flush := func() {
		if cur != "" {
			words = append(words, strings.ToLower(cur))
			cur = ""
		}
	}
	for i, r := range name {
		switch {
		case r == '_' || r == '-' || r == '.' || r == ' ':
			flush()
			continue
		case r >= 'A' && r <= 'Z' && i > 0 && !(name[i-1] >= 'A' && name[i-1] <= 'Z'):
			flush()
		}
		cur += string(r)
	}
	flush()
	return words
}

var (
	placeholder = sync.OnceValue(func() *regexp.Regexp {
		return regexp.MustCompile(`^(<.*>|\$\{.*\}|\{\{.*\}\}|%\(.*\)s|[xX*.]{3,}|\.\.\.)$`)
	})
	identifier = sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(`^[a-z][a-z]*([_.:/-][a-z]+)*$`) })
)

// secretText tells a literal that can be a secret from names, labels,
// addresses and placeholders.
func secretText(name, s string, strict bool) bool {
	if len(s) < 4 || placeholder().MatchString(s) || strings.HasPrefix(s, "/") || strings.HasPrefix(s, "./") || strings.HasPrefix(s, "http://") || strings.HasPrefix(s, "https://") {
		return false
	}
	if strict {
		return true // the framework's own secret setting: any literal is one
	}
	if strings.ContainsAny(s, " \n\t<>") || strings.EqualFold(strings.ReplaceAll(s, "-", "_"), name) {
		return false
	}
	last := splitName(s)
	if len(last) > 0 && identifier().MatchString(s) && (SecretName(s) || len(s) < 12 && !strings.ContainsAny(s, "0123456789")) {
		// password: 'password' in a form, type: 'secret': a name, unless it is
		// the value of a setting in capitals.
		return name == strings.ToUpper(name) && !SecretName(s)
	}
	return true
}

// secretCalls are calls whose argument is a secret, by the place of the
// argument or the name of the option (documentation of jsonwebtoken,
// express-session, cookie-session, PyJWT, itsdangerous).
var secretCalls = map[string]struct {
	arg    int
	option string
}{
	"jsonwebtoken.sign": {1, ""}, "jsonwebtoken.verify": {1, ""}, "jwt.encode": {1, ""}, "jwt.decode": {1, ""},
	"express-session": {-1, "secret"}, "cookie-session": {-1, "keys"}, "cookie-parser": {0, ""}, "koa-session": {-1, ""}, "express-jwt.expressjwt": {-1, "secret"},
	"@fastify/session": {-1, "secret"}, "itsdangerous.URLSafeTimedSerializer": {0, ""}, "itsdangerous.Signer": {0, ""}, "crypto.createHmac": {1, ""},
}

// Secrets finds literals that stand where a secret belongs.
func Secrets(e *value.Eval, files []*code.File) []fact.Secret {
	var list []fact.Secret
	seen := map[string]bool{}
	add := func(name string, v *value.Value, f *code.File, guards []code.Guard, strict bool) {
		lits := literals(v, false, 0)
		for _, l := range lits {
			if l.v.At.Line == 0 || !secretText(name, l.v.Text, strict) {
				continue
			}
			key := l.v.At.String()
			if seen[key] {
				continue
			}
			seen[key] = true
			s := fact.Secret{Name: name, Fallback: l.fallback, At: l.v.At}
			for _, g := range guards {
				s.Guards = append(s.Guards, e.Guard(g))
			}
			list = append(list, s)
		}
	}
	for _, f := range files {
		if f.Lang == code.Go || f.Skimmed {
			continue
		}
		local := workOnly(f)
		scopes := []*code.Scope{f.Top}
		for cls, s := range f.Inside {
			if !local[cls] {
				scopes = append(scopes, s)
			}
		}
		sortScopes(scopes)
		for _, s := range scopes {
			for _, name := range slices.Sorted(maps.Keys(s.Names)) {
				if !SecretName(name) {
					continue
				}
				for _, b := range s.Names[name] {
					if b.Kind == "func" || b.Kind == "class" || b.Kind == "import" || b.Kind == "param" || b.Value == nil || len(b.Path) > 0 && b.Default == nil {
						continue
					}
					if b.Default != nil {
						add(name, value.Or(value.NotKnown("", f.At(b.Default)), e.Expr(b.Default, s), f.At(b.Default)), f, b.Guards, name == "SECRET_KEY")
						continue
					}
					add(name, e.Expr(b.Value, s), f, b.Guards, name == "SECRET_KEY")
				}
			}
		}
		for _, site := range f.Sets {
			name := site.Node.Name
			if site.Node.Is(code.Index) && site.Node.Kid(1).Is(code.String) {
				name = site.Node.Kids[1].Name
			}
			if SecretName(name) {
				add(name, e.Expr(site.Value, site.Scope), f, site.Guards, name == "SECRET_KEY" || name == "secret_key")
			}
		}
		for _, site := range f.Calls {
			callee := site.Node.Kid(0)
			if !couldTakeSecret(f, callee) {
				continue
			}
			v := e.Callee(site)
			if v.Kind == value.External {
				if sc, ok := secretCalls[v.Text]; ok {
					args, keys := e.Arguments(site)
					if sc.arg >= 0 && sc.arg < len(args) {
						add(callName(callee), args[sc.arg], f, site.Guards, true)
					}
					if sc.option != "" {
						for _, a := range args {
							if o := a.Get(sc.option); o != nil {
								add(sc.option, o, f, site.Guards, true)
							}
						}
						if k := keys[sc.option]; k != nil {
							add(sc.option, k, f, site.Guards, true)
						}
					}
				}
			}
		}
		f.Body.Walk(func(n *code.Node) bool {
			if local[n] {
				return false
			}
			switch n.Kind {
			case code.Pair:
				if SecretName(n.Name) && n.Kid(0) != nil && (n.Kid(0).Is(code.String) || n.Kid(0).Is(code.Binary)) {
					add(n.Name, e.Expr(n.Kids[0], f.Top), f, nil, false)
				}
			case code.Call:
				// A variable that holds a secret, read with a literal fallback.
				if couldRead(n) && len(n.Args()) > 1 && n.Kid(1).Is(code.String) && SecretName(n.Kids[1].Name) {
					add(n.Kids[1].Name, e.Expr(n, f.Top), f, nil, true)
				}
				for _, a := range n.Args() {
					if a.Is(code.Keyword) && SecretName(a.Name) && a.Kid(0).Is(code.String) {
						add(a.Name, e.Expr(a.Kid(0), f.Top), f, nil, false)
					}
				}
			case code.Binary:
				if (n.Name == "||" || n.Name == "??") && n.Kid(0).Is(code.Member) && SecretName(n.Kids[0].Name) && couldRead(n.Kids[0]) {
					add(n.Kids[0].Name, e.Expr(n, f.Top), f, nil, true)
				}
			}
			return true
		})
	}
	sort.SliceStable(list, func(i, j int) bool { return list[i].At.Before(list[j].At) })
	return list
}

// workOnly finds the classes and the named parts of objects that by their name
// hold settings for development and tests: class TestingConfig, development: {}.
func workOnly(f *code.File) map[*code.Node]bool {
	found := map[*code.Node]bool{}
	f.Body.Walk(func(n *code.Node) bool {
		if n.Is(code.Class) || n.Is(code.Pair) && n.Kid(0).Is(code.Object) {
			for _, w := range splitName(n.Name) {
				switch w {
				case "test", "tests", "testing", "dev", "develop", "development", "local":
					found[n] = true
				}
			}
		}
		return true
	})
	return found
}

func couldTakeSecret(f *code.File, callee *code.Node) bool {
	if callee == nil {
		return false
	}
	switch callee.Kind {
	case code.Name:
		for _, b := range f.Top.Names[callee.Name] {
			if b.Kind == "import" || b.Value.Is(code.Call) {
				return true
			}
		}
	case code.Member:
		switch callee.Name {
		case "sign", "verify", "encode", "decode", "createHmac", "Signer", "URLSafeTimedSerializer":
			return true
		}
	}
	return false
}

func callName(n *code.Node) string {
	if d := n.Dotted(); d != "" {
		return d
	}
	return "a signing call"
}

type literal struct {
	v        *value.Value
	fallback bool
}

// literals gives the text literals that a value may come to.
func literals(v *value.Value, fallback bool, depth int) []literal {
	if v == nil || depth > 10 {
		return nil
	}
	switch v.Kind {
	case value.Str:
		return []literal{{v, fallback}}
	case value.Cond:
		return append(literals(v.Kids[1], fallback, depth+1), literals(v.Kids[2], fallback, depth+1)...)
	case value.Op:
		switch v.Text {
		case "||", "??", "unset", "catch":
			return append(literals(v.Kids[0], fallback, depth+1), literals(v.Kids[1], true, depth+1)...)
		case "String", "strip":
			return literals(v.Kids[0], fallback, depth+1)
		}
	case value.List:
		var list []literal
		for _, k := range v.Kids {
			list = append(list, literals(k, fallback, depth+1)...)
		}
		return list
	}
	return nil
}

func sortScopes(s []*code.Scope) {
	for i := 1; i < len(s); i++ {
		for j := i; j > 1 && s[j].Class != nil && s[j-1].Class != nil && s[j].Class.Off < s[j-1].Class.Off; j-- {
			s[j], s[j-1] = s[j-1], s[j]
		}
	}
}

// target is the name that an assignment gives a value to: of a variable or of
// an attribute.
func target(n *code.Node) string {
	if n.Is(code.Name) || n.Is(code.Member) {
		return n.Name
	}
	return ""
}

// inquired finds the names of which a file asks whether they hold something: in
// conditions that do not end the program, and before a fallback.
func inquired(f *code.File) map[string]bool {
	m := map[string]bool{}
	names := func(n *code.Node) {
		n.Walk(func(k *code.Node) bool {
			if k.Is(code.Name) || k.Is(code.Member) {
				m[k.Name] = true
			}
			return !k.Is(code.Func)
		})
	}
	f.Body.Walk(func(n *code.Node) bool {
		switch n.Kind {
		case code.If:
			if !insists(n) || filledIn(n.Kid(0)) {
				names(n.Kid(0))
			}
		case code.Cond:
			names(n.Kid(0))
		case code.Binary:
			switch n.Name {
			case "||", "??", "&&", "or", "and":
				if n.Kid(0) != nil {
					names(n.Kids[0])
				}
			}
		}
		return true
	})
	return m
}

// filledIn reports whether a test holds only where a text has something in it: what it
// guards may end the program, or serve in it for good, and nothing is missing without it.
func filledIn(t *code.Node) bool {
	if t.Is(code.Binary) && t.Name == "&&" {
		return filledIn(t.Kid(0)) && filledIn(t.Kid(1))
	}
	return t.Is(code.Binary) && (t.Name == "!=" || t.Name == "!==") && t.Kid(1).Is(code.String) && t.Kid(1).Name == ""
}

// endings are calls that end a program.
var endings = map[string]bool{"exit": true, "Fatal": true, "Fatalf": true, "Fatalln": true, "panic": true, "abort": true, "Exit": true, "die": true}

// demanded lists the variables without which an if ends the program: if key ==
// "" { log.Fatal(…) }, if (!key) throw ….
func demanded(f *code.File) map[string]bool {
	m := map[string]bool{}
	f.Body.Walk(func(n *code.Node) bool {
		if !n.Is(code.If) || !insists(n) {
			return true
		}
		switch t := n.Kid(0); {
		case t.Is(code.Unary) && t.Name == "!" && t.Kid(0).Is(code.Name):
			m[t.Kids[0].Name] = true
		case t.Is(code.Binary) && (t.Name == "==" || t.Name == "===" || t.Name == "is") && t.Kid(0).Is(code.Name):
			if x := t.Kid(1); x.Is(code.Null) || x.Is(code.Undefined) || x.Is(code.False) || x.Is(code.String) && x.Name == "" {
				m[t.Kids[0].Name] = true
			}
		}
		return true
	})
	return m
}

// insists reports whether an if ends the program or raises an error in what it
// guards: what its test asks for must be there.
func insists(n *code.Node) bool {
	found := false
	n.Kid(1).Walk(func(k *code.Node) bool {
		switch {
		case k.Is(code.Throw):
			found = true
		case k.Is(code.Call):
			if c := k.Kid(0); (c.Is(code.Name) || c.Is(code.Member)) && endings[c.Name] {
				found = true
			}
		}
		return !found && !k.Is(code.Func) && !(k.Is(code.If) && k != n.Kid(1)) // another test stands between
	})
	return found
}

// heard lists the variables that decide where the program listens and that no
// line of the code was seen to read: a library reads them by what it was told.
func heard(list []*fact.Listener, known []fact.Variable) []fact.Variable {
	seen := map[string]bool{}
	for _, v := range known {
		seen[v.Name] = true
	}
	var more []fact.Variable
	for _, l := range list {
		if l.Via == "flag" {
			continue
		}
		for _, v := range []*value.Value{l.Host, l.Port, l.Bind} {
			if v == nil {
				continue
			}
			falls := map[*value.Value]*value.Value{}
			v.Walk(func(k *value.Value) {
				if k.Kind == value.Op && len(k.Kids) == 2 && (k.Text == "unset" || k.Text == "??" || k.Text == "||") && k.Kids[0].Kind == value.Env {
					falls[k.Kids[0]] = k.Kids[1]
				}
			})
			for _, k := range v.Variables() {
				if seen[k.Text] || strings.ContainsRune(k.Text, 0) || k.At.File == "" || k.At.Line == 0 {
					continue
				}
				seen[k.Text] = true
				x := fact.Variable{Name: k.Text, At: k.At, Required: k.Unset == value.Raises}
				if def := falls[k]; def != nil {
					x.HasFall, x.Required = true, false
					x.Fallback = Shown(x.Name, def)
				}
				x.Tested = !x.HasFall && !x.Required
				more = append(more, x)
			}
		}
	}
	return more
}
