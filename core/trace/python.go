package trace

import (
	"encoding/json"
	"maps"
	"math"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"ubique/core/code"
	"ubique/core/place"
)

// pyBuiltin calls a function of Python or of its library; done is false for any
// other.
func (m *machine) pyBuiltin(f *opaque, args []any, keys map[string]any, at spot) (v any, done bool, err error) {
	if strings.HasPrefix(f.path, "os.") || strings.HasPrefix(f.path, "subprocess.") || strings.HasPrefix(f.path, "asyncio.create_subprocess") {
		if v, done, err := m.pyLaunches(f.path, args, keys, at); done || err != nil {
			return v, true, err
		}
	}
	arg := func(i int) any {
		if i < len(args) {
			return args[i]
		}
		return nil
	}
	text := func(i int) string { return pyShow(arg(i)) }
	top := m.topOf(at)
	if v, done, err := m.tasks(f.path, args, keys, at); done || err != nil {
		return v, done, err
	}
	switch f.path {
	case "int", "float", "str", "bool", "len", "abs", "round", "max", "min", "sum", "sorted", "hex", "ord", "chr", "repr", "os.path.join", "os.path.dirname", "os.path.abspath", "any", "all":
		if o := opaqueAmong(args); o != nil {
			if _, isPath := arg(0).(*opaque); isPath && strings.HasPrefix(f.path, "os.path") {
				return nil, false, nil
			}
			return dontKnow("what is made of " + o.String()), true, nil
		}
	}
	if pyLacking(f.path, args) {
		return nil, true, certainly("TypeError", "what "+f.path+" is given is None")
	}
	if v, done, err := m.pyStandard(f, args, keys, at); done || err != nil {
		return v, done, err
	}
	if method, ok := strings.CutPrefix(f.path, "str."); ok { // of a text that it is given
		if t, isText := arg(0).(string); isText {
			return m.pyText(t, method, args[1:], keys, top, at)
		}
	}
	if f.path == "Exception" || f.path == "EnvironmentError" || f.path == "IOError" || parents[f.path] != "" {
		return madeError(f.path, text(0)), true, nil
	}
	switch f.path {
	case "configparser.ConfigParser", "configparser.RawConfigParser", "configparser.SafeConfigParser":
		p := newParser()
		if d, ok := arg(0).(*object); ok {
			if d2, given := keys["defaults"].(*object); given {
				d = d2
			}
			for _, k := range d.keys {
				p.section(defaults, true).set(strings.ToLower(k), pyShow(d.cells[k].v))
			}
		} else if d, ok := keys["defaults"].(*object); ok {
			for _, k := range d.keys {
				p.section(defaults, true).set(strings.ToLower(k), pyShow(d.cells[k].v))
			}
		}
		if keys["interpolation"] != nil || keys["allow_no_value"] != nil || keys["delimiters"] != nil || keys["converters"] != nil {
			return dontKnow("settings of a form of their own"), true, nil
		}
		return p, true, nil
	case "int":
		if len(args) == 0 {
			return integer(0), true, nil
		}
		base := 10
		if b, ok := arg(1).(integer); ok {
			base = int(b)
		} else if b, ok := keys["base"].(integer); ok {
			base = int(b)
		}
		from := arg(0)
		if c, ok := from.(*content); ok {
			from = c.text
		}
		switch x := from.(type) {
		case integer:
			return x, true, nil
		case float64:
			return integer(math.Trunc(x)), true, nil
		case bool:
			if x {
				return integer(1), true, nil
			}
			return integer(0), true, nil
		case string:
			s := strings.ReplaceAll(strings.TrimSpace(x), "_", "")
			switch low := strings.ToLower(s); {
			case (base == 16 || base == 0) && strings.HasPrefix(low, "0x"):
				s, base = s[2:], 16
			case (base == 8 || base == 0) && strings.HasPrefix(low, "0o"):
				s, base = s[2:], 8
			case (base == 2 || base == 0) && strings.HasPrefix(low, "0b"):
				s, base = s[2:], 2
			case base == 0 && len(s) > 1 && s[0] == '0' && strings.Trim(s, "0") != "":
				return nil, true, raise("ValueError", "invalid literal for int()")
			case base == 0:
				base = 10
			}
			i, err := strconv.ParseInt(s, base, 64)
			if err != nil {
				return nil, true, raise("ValueError", "invalid literal for int() with base "+strconv.Itoa(base)+": "+pyQuoted(x))
			}
			return integer(i), true, nil
		}
		return nil, true, raise("TypeError", "int() of what is no number")
	case "float":
		switch x := arg(0).(type) {
		case integer:
			return float64(x), true, nil
		case float64:
			return x, true, nil
		case string:
			n, err := strconv.ParseFloat(strings.TrimSpace(x), 64)
			if err != nil {
				return nil, true, raise("ValueError", "could not convert to float")
			}
			return n, true, nil
		}
		return nil, true, raise("TypeError", "float() of what is no number")
	case "str":
		if len(args) == 0 {
			return "", true, nil
		}
		v, err := m.pyText1(arg(0), false, at)
		return v, true, err
	case "repr":
		v, err := m.pyText1(arg(0), true, at)
		return v, true, err
	case "format":
		v, err := m.pyField(arg(0), 0, show(first(append(args[min(1, len(args)):], ""))), at)
		return v, true, err
	case "bool":
		yes, ok := truth(arg(0), true)
		if !ok {
			return dontKnow("whether something counts as true"), true, nil
		}
		return yes, true, nil
	case "len":
		switch x := arg(0).(type) {
		case string:
			return integer(len([]rune(x))), true, nil
		case *list:
			if x.set && len(x.items) > 1 && opaqueAmong(x.items) != nil { // it may be one of the others
				return dontKnow("how many there are"), true, nil
			}
			return integer(len(x.items)), true, nil
		case *object:
			if fn := m.method(x, "__len__"); fn != nil {
				v, err := m.call(fn, x, nil, nil, at)
				return v, true, err
			}
			if x.mapping != nil {
				x = x.mapping
			}
			return integer(len(x.keys)), true, nil
		}
		return dontKnow("a length"), true, nil
	case "abs":
		if i, ok := arg(0).(integer); ok {
			return max(i, -i), true, nil
		}
	case "round":
		if x, ok := arg(0).(float64); ok && len(args) == 1 {
			return integer(math.RoundToEven(x)), true, nil
		}
		return arg(0), true, nil
	case "max", "min":
		items := args
		if len(args) == 1 {
			if items, err = m.items(args[0], top); err != nil {
				return nil, true, err
			}
		}
		if len(items) == 0 {
			if d, ok := keys["default"]; ok {
				return d, true, nil
			}
			return nil, true, raise("ValueError", "no elements")
		}
		if key := keys["key"]; key != nil {
			v, done, err := m.sortedBy(&list{items: items}, key, f.path == "max", at)
			if l, ok := v.(*list); ok && err == nil {
				return l.items[0], true, nil
			}
			return v, done, err
		}
		best := items[0]
		for _, x := range items[1:] {
			n, ok := pyLess(x, best)
			if !ok || !known(x) || !known(best) {
				return dontKnow("the most of what is not known"), true, nil
			}
			if n != 0 && (n > 0) == (f.path == "max") {
				best = x
			}
		}
		return best, true, nil
	case "sum":
		items, err := m.items(arg(0), top)
		if err != nil {
			return nil, true, err
		}
		v := any(integer(0))
		if len(args) > 1 {
			v = args[1]
		} else if start, ok := keys["start"]; ok {
			v = start
		}
		for _, x := range items {
			if !known(x) || !known(v) {
				return dontKnow("a sum"), true, nil
			}
			if v, err = pyOperate("+", v, x); err != nil {
				return nil, true, err
			}
		}
		return v, true, nil
	case "any", "all":
		items, err := m.items(arg(0), top)
		if err != nil {
			return nil, true, err
		}
		for _, x := range items {
			yes, ok := truth(x, true)
			if !ok {
				return dontKnow("whether something counts as true"), true, nil
			}
			if yes == (f.path == "any") {
				return yes, true, nil
			}
		}
		return f.path == "all", true, nil
	case "list", "tuple", "set", "frozenset", "iter", "reversed", "sorted":
		if len(args) == 0 {
			return &list{tuple: f.path == "tuple", set: f.path == "set"}, true, nil
		}
		items, err := m.items(arg(0), top)
		if err != nil {
			return nil, true, err
		}
		l := &list{items: slices.Clone(items), tuple: f.path == "tuple", set: strings.HasSuffix(f.path, "set")}
		switch f.path {
		case "reversed":
			slices.Reverse(l.items)
		case "sorted":
			if opaqueAmong(l.items) != nil {
				return nil, true, giveUp("a list that is sorted")
			}
			if key := keys["key"]; key != nil {
				return m.sortedBy(l, key, keys["reverse"], at)
			}
			unlike := false
			slices.SortStableFunc(l.items, func(x, y any) int {
				n, ok := pyLess(x, y)
				unlike = unlike || !ok
				return n
			})
			if unlike {
				return nil, true, giveUp("a list that is sorted")
			}
			yes, ok := truth(keys["reverse"], true)
			if _, given := keys["reverse"]; given && !ok {
				return nil, true, undecided("an order that is not known")
			}
			if yes {
				slices.Reverse(l.items)
			}
		}
		return l, true, nil
	case "argparse.ArgumentParser":
		o, _ := m.newArgParser(keys)
		return o, true, nil
	case "dict", "collections.OrderedDict", "types.SimpleNamespace", "argparse.Namespace":
		o := newObject()
		o.dict = f.path == "dict" || f.path == "collections.OrderedDict"
		if !o.dict {
			o.class = &class{name: "SimpleNamespace", builtin: true, methods: newObject(), statics: newObject()}
		}
		for _, a := range args {
			if c, ok := a.(*content); ok {
				v, err := m.parsed(c)
				if err != nil {
					return nil, true, err
				}
				a = v
			}
			switch a := a.(type) {
			case *object:
				if a.mapping != nil {
					a = a.mapping
				}
				for _, k := range a.keys {
					o.set(k, a.cells[k].v)
				}
			case *envMap:
				for _, k := range m.envKeys() {
					o.set(k, m.env.text(k))
				}
			case *list:
				for _, p := range a.items {
					pair, err := m.items(p, top)
					if err != nil || len(pair) != 2 {
						return nil, true, giveUp("what a dictionary is made of")
					}
					if unclear(pair[:1], 3) != nil {
						return nil, true, undecided("a key that is not known")
					}
					o.set(keyText(pair[0]), pair[1])
				}
			default:
				return nil, true, giveUp("what a dictionary is made of")
			}
		}
		for _, k := range sortedKeys(keys) {
			o.set(k, keys[k])
		}
		return o, true, nil
	case "range":
		ends := []int{0, 0, 1}
		for i := range args {
			x, ok := args[i].(integer)
			if !ok || i > 2 {
				return nil, true, undecided("a range that is not known")
			}
			ends[i] = int(x)
		}
		if len(args) == 1 {
			ends[0], ends[1] = 0, ends[0]
		}
		l := &list{}
		for i := ends[0]; ends[2] > 0 && i < ends[1] || ends[2] < 0 && i > ends[1]; i += ends[2] {
			if len(l.items) > maxItems {
				return nil, true, spent("a range that is too long")
			}
			l.items = append(l.items, integer(i))
		}
		return l, true, nil
	case "enumerate", "zip", "map", "filter":
		var lists [][]any
		from := args
		if f.path == "map" || f.path == "filter" {
			from = args[min(1, len(args)):]
		}
		for i, a := range from {
			if f.path == "enumerate" && i > 0 {
				break
			}
			items, err := m.items(a, top)
			if err != nil {
				return nil, true, err
			}
			lists = append(lists, items)
		}
		if len(lists) == 0 {
			return &list{}, true, nil
		}
		start := 0
		if x, ok := keys["start"].(integer); ok {
			start = int(x)
		} else if x, ok := arg(1).(integer); ok && f.path == "enumerate" {
			start = int(x)
		}
		l := &list{}
		for i, x := range lists[0] {
			row := []any{x}
			short := false
			for _, other := range lists[1:] {
				if i >= len(other) {
					short = true
					break
				}
				row = append(row, other[i])
			}
			if short {
				break
			}
			switch f.path {
			case "enumerate":
				l.items = append(l.items, &list{items: []any{integer(start + i), x}, tuple: true})
			case "zip":
				l.items = append(l.items, &list{items: row, tuple: true})
			case "map":
				v, err := m.call(args[0], undefined, row, nil, at)
				if err != nil {
					return nil, true, err
				}
				l.items = append(l.items, v)
			case "filter":
				v := x
				if args[0] != nil {
					if v, err = m.call(args[0], undefined, row, nil, at); err != nil {
						return nil, true, err
					}
				}
				yes, err := m.decide(v, top, at.n)
				if err != nil {
					return nil, true, err
				}
				if yes {
					l.items = append(l.items, x)
				}
			}
		}
		return l, true, nil
	case "next":
		items, err := m.items(arg(0), top)
		if err != nil {
			return nil, true, err
		}
		if len(items) > 0 {
			if l, ok := arg(0).(*list); ok {
				l.items = l.items[1:]
			}
			return items[0], true, nil
		}
		if len(args) > 1 {
			return args[1], true, nil
		}
		return nil, true, raise("StopIteration", "")
	case "isinstance":
		return m.isInstance(arg(0), arg(1)), true, nil
	case "getattr", "hasattr":
		name, ok := arg(1).(string)
		if !ok {
			return dontKnow("an attribute"), true, nil
		}
		v, err := m.key(arg(0), name, top, at.n)
		if _, failed := err.(*thrown); failed {
			if f.path == "hasattr" {
				return false, true, nil
			}
			if len(args) > 2 {
				return args[2], true, nil
			}
		}
		if err != nil {
			return nil, true, err
		}
		if f.path == "hasattr" {
			if !known(v) {
				return dontKnow("whether something is there"), true, nil
			}
			return true, true, nil
		}
		return v, true, nil
	case "setattr":
		name, ok := arg(1).(string)
		if !ok {
			return nil, true, giveUp("an attribute that is set")
		}
		return nil, true, m.setKey(arg(0), name, arg(2), top, at.n)
	case "callable":
		switch arg(0).(type) {
		case *function, *class:
			return true, true, nil
		case *opaque:
			return dontKnow("whether something can be called"), true, nil
		}
		return false, true, nil
	case "decouple.config", "decouple.AutoConfig()", "decouple.Config()":
		if f.path != "decouple.Config()" {
			return m.decoupled(args, keys, at)
		}
	case "ssl.SSLContext().load_cert_chain", "ssl.create_default_context().load_cert_chain":
		for _, a := range []any{arg(0), arg(1), keys["certfile"], keys["keyfile"]} {
			if name, ok := a.(string); ok && m.lacks(name) {
				return nil, true, raise("FileNotFoundError", "[Errno 2] No such file or directory")
			}
		}
	case "urllib.parse.urlsplit", "urllib.parse.urlparse":
		scheme := ""
		if v, ok := arg(1).(string); ok && len(args) > 1 {
			scheme = v
		} else if v, ok := keys["scheme"].(string); ok {
			scheme = v
		}
		if text, ok := arg(0).(string); ok {
			return pyURL(text, scheme, strings.HasSuffix(f.path, "urlparse")), true, nil
		}
	case "starlette.datastructures.CommaSeparatedStrings": // a list (Starlette 0.26, "Configuration")
		if text, ok := arg(0).(string); ok && !strings.ContainsAny(text, "\"'\\") {
			l := &list{}
			for part := range strings.SplitSeq(text, ",") {
				if part = strings.TrimSpace(part); part != "" {
					l.items = append(l.items, part)
				}
			}
			return l, true, nil
		}
	case "starlette.config.Config()":
		return m.starletteConfig(f, args, keys, at)
	case "dotenv.find_dotenv":
		var name any = ".env"
		if len(args) > 0 {
			name = args[0]
		} else if given, ok := keys["filename"]; ok {
			name = given
		}
		here := at.f.Name
		if cwd := len(args) > 2; cwd || keys["usecwd"] == true {
			here = path.Join(m.e.Dir, "x")
		}
		found, err := m.pyFindDotenv(name, here)
		if fails := len(args) > 1 || keys["raise_error_if_not_found"] == true; err == nil && found == "" && fails {
			return nil, true, certainly("OSError", "File not found")
		}
		return found, true, err
	case "dotenv.dotenv_values", "dotenv.load_dotenv":
		var name any
		if len(args) > 0 {
			name = args[0]
		} else if p, ok := keys["dotenv_path"]; ok {
			name = p
		}
		if name == nil || name == "" {
			found, err := m.pyFindDotenv(".env", at.f.Name)
			if err != nil {
				return nil, true, err
			}
			name = found
		}
		d, there, err := m.dotenvFile(name)
		if err != nil || f.path == "dotenv.dotenv_values" {
			return d, true, err
		}
		for _, k := range d.keys {
			if _, set := m.env.get(k); !set || keys["override"] == true {
				m.env.put(k, show(d.cells[k].v))
			}
		}
		return there, true, nil
	case "getopt.getopt", "getopt.gnu_getopt":
		v, err := m.pyOptions(args, f.path == "getopt.gnu_getopt")
		return v, true, err
	case "django.core.wsgi.get_wsgi_application", "django.core.asgi.get_asgi_application", "django.setup", "django.core.management.execute_from_command_line": // they load the settings
		manages := strings.HasSuffix(f.path, "execute_from_command_line")
		if words := m.words(2); manages { // --settings beats the environment
			for i, w := range words {
				t, _ := w.(string)
				if v, ok := strings.CutPrefix(t, "--settings="); ok {
					m.env.put("DJANGO_SETTINGS_MODULE", v)
				} else if t == "--settings" && i+1 < len(words) {
					m.env.put("DJANGO_SETTINGS_MODULE", show(words[i+1]))
				}
			}
		}
		if name := m.env.text("DJANGO_SETTINGS_MODULE"); name != "" && !m.set.Vague["DJANGO_SETTINGS_MODULE"] {
			root, _, inside := strings.Cut(name, ".")
			_, own := m.e.Loader.Resolve(at.f, root, "")
			if _, ok := m.e.Loader.Resolve(at.f, name, ""); !ok && own && inside {
				return nil, true, certainly("ModuleNotFoundError", "No module named '"+name+"'")
			}
			v, err := m.pyModule(name, at.f)
			if err := ends(v, err); err != nil {
				return nil, true, err
			}
			if mod, ok := v.(*module); ok && manages {
				if err := m.djangoCommand(mod, at); err != nil {
					return nil, true, err
				}
			}
		}
	case "bottle.run", "bottle.Bottle().run":
		name, ok := keys["server"].(string)
		if ok && !bottleServers[name] && !strings.ContainsAny(name, ":.") {
			if _, own := m.e.Loader.Resolve(at.f, name, ""); !own {
				return nil, true, certainly("ModuleNotFoundError", "No module named '"+name+"'")
			}
		}
	case "uvicorn.run":
		if m.serving {
			return nil, true, raise("RuntimeError", "asyncio.run() cannot be called from a running event loop")
		}
		name, ok := arg(0).(string)
		if module, _, called := strings.Cut(name, ":"); ok && called && keys["reload"] == nil && keys["workers"] == nil { // it loads the application
			m.serving = true
			err := ends(m.pyModule(module, at.f))
			m.serving = false
			if err != nil {
				return nil, true, err
			}
		}
	case "importlib.import_module":
		name, ok := arg(0).(string)
		if strings.HasPrefix(name, ".") { // beside the package that it is given
			pkg := arg(1)
			if p, named := keys["package"]; named {
				pkg = p
			}
			base, known := pkg.(string)
			rest := strings.TrimLeft(name, ".")
			parts := strings.Split(base, ".")
			if up := len(name) - len(rest) - 1; ok && known && up < len(parts) {
				name, args = strings.Join(parts[:len(parts)-up], ".")+"."+rest, args[:1]
			}
		}
		if !ok || len(args) > 1 || strings.HasPrefix(name, ".") {
			return nil, true, giveUp("a module that is named while the program runs")
		}
		v, err := m.pyModule(name, at.f)
		return v, true, err
	case "pkgutil.iter_modules": // finders, names, and whether they are packages
		dirs, ok := arg(0).(*list)
		if !ok || len(args) != 1 {
			return nil, false, nil
		}
		out := &list{}
		for _, d := range dirs.items {
			names, ok := m.folder(d)
			if !ok {
				return nil, true, giveUp("the modules of a folder")
			}
			for _, x := range names.items {
				n := show(x)
				module, isFile := strings.CutSuffix(n, ".py")
				dir, in := m.treePath(pathText(d) + "/" + n)
				isPackage := !isFile && in && slices.Contains(m.e.Loader.Beside(dir), dir+"/__init__.py")
				if isFile && module != "__init__" || isPackage {
					out.items = append(out.items, &list{items: []any{&opaque{path: "pkgutil.finder"}, module, isPackage}, tuple: true})
				}
			}
		}
		return out, true, nil
	case "fire.Fire":
		on := arg(0)
		if v, ok := keys["component"]; ok {
			on = v
		}
		if on == nil || keys["command"] != nil {
			return nil, true, giveUp("what Fire is for")
		}
		v, err := m.pyFire(on, at)
		return v, true, err
	case "docopt.docopt":
		doc, ok := arg(0).(string)
		if v, has := keys["doc"].(string); has {
			doc, ok = v, true
		}
		given := m.argv()[1:]
		from := arg(1)
		if v, has := keys["argv"]; has {
			from = v
		}
		if l, isList := from.(*list); isList {
			given = l.items
		}
		var words []string
		for _, w := range given {
			t, isText := w.(string)
			ok = ok && isText
			words = append(words, t)
		}
		if !ok || keys["options_first"] != nil {
			return nil, true, giveUp("a usage text that is not known")
		}
		v, err := m.pyDocopt(doc, words)
		return v, true, err
	case "configargparse.ArgumentParser", "configargparse.ArgParser", "configargparse.Parser", "configargparse.get_argument_parser", "configargparse.get_arg_parser", "configargparse.get_parser":
		o, p := m.newArgParser(keys)
		p.env = true
		if t, ok := keys["auto_env_var_prefix"].(string); ok {
			p.prefix = &t
		}
		if keys["default_config_files"] != nil {
			p.odd = "a parser with files of its own"
		}
		for _, name := range []string{"add", "add_arg"} {
			o.class.methods.set(name, o.class.methods.cells["add_argument"].v)
		}
		return o, true, nil
	case "ast.literal_eval":
		t, ok := arg(0).(string)
		if c, isContent := arg(0).(*content); isContent {
			t, ok = c.text, true
		}
		if !ok {
			return nil, true, giveUp("a text that is read as code")
		}
		v, err := m.pyLiteral(t)
		return v, true, err
	case "string.Template":
		o := newObject()
		o.class = &class{name: "Template", builtin: true, statics: newObject(), methods: newObject()}
		o.set("template", arg(0))
		return o, true, nil
	case "collections.ChainMap":
		d := newObject()
		d.dict = true
		for _, a := range slices.Backward(args) {
			if _, ok := a.(*envMap); ok {
				a = m.envObject(true)
			}
			o, ok := a.(*object)
			if !ok || !o.dict && o.class != nil {
				return nil, true, undecided("a map that is not known")
			}
			for _, k := range o.keys {
				d.set(k, o.cells[k].v)
			}
		}
		return d, true, nil
	case "operator.itemgetter", "operator.attrgetter":
		names := slices.Clone(args)
		attr := f.path == "operator.attrgetter"
		return &function{native: func(m *machine, _ any, given []any, _ map[string]any, at spot) (any, error) {
			l := &list{tuple: true}
			for _, k := range names {
				var v any
				var err error
				if attr {
					v, err = m.key(first(given), show(k), top, at.n)
				} else {
					in := top.inner()
					in.declare("\x00base", first(given))
					in.declare("\x00key", k)
					v, err = m.index(first(given), &code.Node{Kind: code.Index, Off: at.n.Off, End: at.n.End, Kids: []*code.Node{{Kind: code.Name, Name: "\x00base"}, {Kind: code.Name, Name: "\x00key"}}}, in)
				}
				if err != nil {
					return nil, err
				}
				l.items = append(l.items, v)
			}
			if len(l.items) == 1 {
				return l.items[0], nil
			}
			return l, nil
		}}, true, nil
	case "globals":
		if mod := m.modules[at.f.Name]; mod != nil && len(args) == 0 {
			return globalNames{mod}, true, nil
		}
	case "dir":
		names := map[string]bool{}
		for _, k := range strings.Fields(pyPlainNames) {
			names[k] = true
		}
		var of *class
		switch x := arg(0).(type) {
		case *object:
			for _, k := range x.keys {
				names[k] = k[0] != 0
			}
			of = x.class
		case *class:
			of = x
		case *module:
			names = map[string]bool{"__name__": true, "__doc__": true, "__file__": true, "__package__": true, "__spec__": true, "__loader__": true, "__builtins__": true, "__cached__": true}
			for k := range x.top.vars {
				names[k] = true
			}
		default:
			return nil, true, undecided("the names of what is not known")
		}
		if of != nil {
			if outer(of) != nil || of.builtin {
				return nil, true, undecided("the names of what is not known")
			}
			for _, c := range of.line() {
				for _, k := range c.statics.keys {
					names[k] = true
				}
			}
		}
		l := &list{}
		for _, k := range slices.Sorted(maps.Keys(names)) {
			if names[k] {
				l.items = append(l.items, k)
			}
		}
		return l, true, nil
	case "vars":
		if o, ok := arg(0).(*object); ok {
			d := newObject()
			d.dict, d.keys, d.cells = true, o.keys, o.cells
			return d, true, nil
		}
	case "type":
		if o, ok := arg(0).(*object); ok && o.class != nil && len(args) == 1 {
			return o.class, true, nil
		}
		switch arg(0).(type) {
		case string:
			return m.package1("str"), true, nil
		case integer:
			return m.package1("int"), true, nil
		case bool:
			return m.package1("bool"), true, nil
		case float64:
			return m.package1("float"), true, nil
		}
		return dontKnow("a type"), true, nil
	case "dataclasses.is_dataclass":
		switch x := arg(0).(type) {
		case *object:
			return x.class != nil && x.class.data, true, nil
		case *class:
			return x.data, true, nil
		case *opaque:
			return dontKnow("whether something is a data class"), true, nil
		}
		return false, true, nil
	case "print", "logging.info", "logging.debug", "logging.warning", "logging.error", "logging.basicConfig", "warnings.warn":
		return nil, true, nil
	case "super":
		return nil, true, giveUp("a base that is not followed")
	case "hex":
		if i, ok := arg(0).(integer); ok {
			return "0x" + strconv.FormatInt(int64(i), 16), true, nil
		}
	case "os.getenv", "os.environ.get":
		key, ok := arg(0).(string)
		if !ok {
			return dontKnow("a variable"), true, nil
		}
		if v, ok := m.lookup(key, at); ok {
			return v, true, nil
		}
		if d, ok := keys["default"]; ok {
			return d, true, nil
		}
		return arg(1), true, nil
	case "os.putenv":
		return nil, true, nil
	case code.Asserting: // what is not known is taken to hold
		if yes, ok := truth(arg(0), true); ok && !yes {
			return nil, true, certainly("AssertionError", "")
		}
		return nil, true, nil
	case "sys.exit", "exit", "quit", "os._exit", "os.abort":
		return nil, true, &exit{}
	case "os.path.join":
		p := ""
		for i := range args {
			t := pathText(args[i])
			switch {
			case strings.HasPrefix(t, "/"), p == "":
				p = t
			case strings.HasSuffix(p, "/"):
				p += t
			default:
				p += "/" + t
			}
		}
		return p, true, nil
	case "os.path.normpath":
		return path.Clean(pathText(arg(0))), true, nil
	case "os.path.dirname":
		if s := pathText(arg(0)); strings.Contains(s, "/") {
			return path.Dir(s), true, nil
		}
		return "", true, nil
	case "os.path.basename":
		return path.Base(pathText(arg(0))), true, nil
	case "os.path.abspath", "os.path.realpath", "os.path.expanduser":
		s := pathText(arg(0))
		if !strings.HasPrefix(s, "/") {
			s = path.Join(root, m.e.Dir, s)
		}
		if f.path != "os.path.expanduser" {
			s = path.Clean(s)
		}
		return s, true, nil
	case "os.path.exists", "os.path.isfile", "os.path.isdir":
		return m.there(pathText(arg(0)), f.path != "os.path.isdir", f.path != "os.path.isfile"), true, nil
	case "os.getcwd":
		return path.Join(root, m.e.Dir), true, nil
	case "pathlib.Path", "pathlib.PurePath":
		if o := opaqueAmong(args); o != nil {
			return dontKnow("a path"), true, nil
		}
		p := ""
		for i := range args {
			p = path.Join(p, pathText(args[i]))
		}
		return pyPath(p), true, nil
	case "pathlib.Path.cwd":
		return pyPath(path.Join(root, m.e.Dir)), true, nil
	case "open", "io.open":
		v := m.readFile(arg(0))
		if t, ok := v.(*thrown); ok {
			return nil, true, t
		}
		return v, true, nil
	case "json.load", "json.loads", "yaml.safe_load", "yaml.load", "yaml.full_load", "tomllib.load", "tomllib.loads", "tomli.load", "tomli.loads", "toml.load", "toml.loads":
		if s, ok := arg(0).(string); ok && f.path == "toml.load" {
			v := m.readFile(s)
			if t, ok := v.(*thrown); ok {
				return nil, true, t
			}
			v, err := m.parsed(v)
			return v, true, err
		}
		if _, ok := arg(0).(string); ok && f.path == "json.load" {
			return nil, true, giveUp("a text in the place of a file")
		}
		if c, ok := arg(0).(*content); ok && strings.HasPrefix(f.path, "json.") && c.text != "" && !json.Valid([]byte(c.text)) {
			return nil, true, certainly("JSONDecodeError", "not JSON")
		}
		if t, ok := arg(0).(string); ok && !strings.HasPrefix(f.path, "json.") {
			v, err := m.parsedText(t, !strings.HasPrefix(f.path, "yaml."))
			return v, true, err
		}
		v, err := m.parsed(arg(0))
		return v, true, err
	case "re.match", "re.fullmatch", "re.search", "re.sub", "re.split", "re.findall", "re.compile":
		return m.pyPattern(f.path, args, keys, at)
	case "itertools.chain", "itertools.chain.from_iterable":
		from := args
		if strings.HasSuffix(f.path, "from_iterable") {
			if from, err = m.items(arg(0), top); err != nil {
				return nil, true, err
			}
		}
		l := &list{}
		for _, x := range from {
			items, err := m.items(x, top)
			if err != nil {
				return nil, true, err
			}
			l.items = append(l.items, items...)
		}
		return l, true, nil
	case "divmod":
		if opaqueAmong(args) != nil {
			return dontKnow("what is made of what is not known"), true, nil
		}
		q, err := pyOperate("//", arg(0), arg(1))
		if err != nil {
			return nil, true, err
		}
		r, err := pyOperate("%", arg(0), arg(1))
		return &list{items: []any{q, r}, tuple: true}, true, err
	case "functools.reduce":
		items, err := m.items(arg(1), top)
		if err != nil {
			return nil, true, err
		}
		acc := arg(2)
		if len(args) < 3 {
			if len(items) == 0 {
				return nil, true, raise("TypeError", "reduce() of empty iterable with no initial value")
			}
			acc, items = items[0], items[1:]
		}
		for _, x := range items {
			if acc, err = m.call(arg(0), undefined, []any{acc, x}, nil, at); err != nil {
				return nil, true, err
			}
		}
		return acc, true, nil
	case "functools.partial":
		fn, more := arg(0), args[min(1, len(args)):]
		return &function{name: "partial", native: func(m *machine, _ any, rest []any, k map[string]any, at spot) (any, error) {
			all := map[string]any{}
			for _, from := range []map[string]any{keys, k} {
				for name, v := range from {
					all[name] = v
				}
			}
			return m.call(fn, undefined, append(slices.Clone(more), rest...), all, at)
		}}, true, nil
	case "collections.defaultdict":
		o := newObject()
		o.dict = true
		o.cells[factory] = &cell{v: arg(0)}
		from, ok := arg(1).(*object)
		if len(args) > 1 && !ok || len(keys) > 0 {
			return nil, true, giveUp("what a dictionary is made of")
		}
		if ok {
			for _, k := range from.keys {
				o.set(k, from.cells[k].v)
			}
		}
		return o, true, nil
	case "collections.namedtuple":
		c := &class{name: text(0), data: true, methods: newObject(), statics: newObject(), scope: top}
		names := arg(1)
		if s, ok := names.(string); ok {
			l := &list{}
			for _, w := range strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' }) {
				l.items = append(l.items, w)
			}
			names = l
		}
		l, ok := names.(*list)
		if !ok {
			return dontKnow("a named tuple"), true, nil
		}
		c.bases = nil
		c.tupled = l.items
		if d, ok := keys["defaults"].(*list); ok && len(d.items) <= len(l.items) { // of the last ones
			for i, v := range d.items {
				c.statics.set(show(l.items[len(l.items)-len(d.items)+i]), v)
			}
		}
		return c, true, nil
	case "socket.has_dualstack_ipv6": // as Linux has it
		return true, true, nil
	case "multiprocessing.cpu_count", "os.cpu_count":
		return integer(2), true, nil
	case "asyncio.sleep", "time.sleep", "signal.signal":
		return nil, true, nil
	case "signal.pause":
		return nil, true, &exit{stays: true}
	case "SystemExit":
		return &opaque{path: "SystemExit()"}, true, nil
	case "dataclasses.replace":
		if o, ok := arg(0).(*object); ok {
			return o.with(keys), true, nil
		}
	case "dataclasses.fields":
		c, _ := arg(0).(*class)
		if o, ok := arg(0).(*object); ok {
			c = o.class
		}
		if c != nil {
			l := &list{tuple: true}
			for _, name := range fieldsOf(c) {
				f, err := m.pyDataField(c, name)
				if err != nil {
					return nil, true, err
				}
				l.items = append(l.items, f)
			}
			return l, true, nil
		}
	case "contextlib.closing", "contextlib.aclosing":
		return arg(0), true, nil
	case "contextlib.ExitStack().enter_context":
		if o, ok := arg(0).(*object); ok {
			if enter := m.method(o, "__enter__"); enter != nil {
				v, err := m.call(enter, o, nil, nil, at)
				return v, true, err
			}
		}
		return arg(0), true, nil
	case "shlex.split":
		t, ok := arg(0).(string)
		if !ok {
			return nil, false, nil
		}
		words, whole := shellWords(t, arg(1) == any(true) || keys["comments"] == any(true))
		if !whole {
			return nil, true, raise("ValueError", "No closing quotation")
		}
		return oldTexts(words), true, nil
	case "shlex.quote":
		if t, ok := arg(0).(string); ok && t != "" && strings.Trim(strings.ToLower(t), "abcdefghijklmnopqrstuvwxyz0123456789@%+=:,./-_") == "" {
			return t, true, nil
		}
	case "typing.get_type_hints", "inspect.get_annotations":
		if c, ok := arg(0).(*class); ok {
			o, err := m.pyHints(c)
			return o, true, err
		}
	case "dataclasses.asdict":
		if o, ok := arg(0).(*object); ok {
			return o.asDict(), true, nil
		}
	case "object.__setattr__":
		if o, ok := arg(0).(*object); ok && len(args) == 3 {
			o.set(text(1), arg(2))
			return nil, true, nil
		}
	case "object.__new__":
		if c, ok := arg(0).(*class); ok {
			v, err := (&super{of: c, this: c}).plain("__new__").native(m, nil, args, keys, at)
			return v, true, err
		}
	case "typing.cast":
		return arg(1), true, nil
	case "distutils.util.strtobool":
		switch strings.ToLower(text(0)) {
		case "y", "yes", "t", "true", "on", "1":
			return integer(1), true, nil
		case "n", "no", "f", "false", "off", "0":
			return integer(0), true, nil
		}
		return nil, true, raise("ValueError", "no truth value")
	}
	return m.pyMore(f, args, keys, at)
}

func (m *machine) isInstance(v, of any) any {
	switch of := of.(type) {
	case *list:
		for _, k := range of.items {
			if yes, ok := m.isInstance(v, k).(bool); !ok || yes {
				return m.isInstance(v, k)
			}
		}
		return false
	case *class:
		o, ok := v.(*object)
		return ok && derives(o.class, of)
	case *opaque:
		if !known(v) {
			return dontKnow("what something is")
		}
		switch v := v.(type) {
		case string:
			return of.path == "str"
		case integer:
			return of.path == "int"
		case bool:
			return of.path == "bool" || of.path == "int"
		case float64:
			return of.path == "float"
		case *list:
			return of.path == "list" && !v.tuple && !v.set || of.path == "tuple" && v.tuple || of.path == "set" && v.set
		case *object:
			return of.path == "dict" && (v.dict || v.mapping != nil)
		case nil:
			return false
		}
	}
	return dontKnow("what something is")
}

func (m *machine) pyText(b, name string, args []any, keys map[string]any, s *scope, at spot) (any, bool, error) {
	if o := opaqueAmong(args); o != nil {
		return dontKnow("what is made of " + o.String()), true, nil
	}
	arg := func(i int) string { return pyShow(at2(args, i)) }
	cut := func(def string) string {
		if len(args) > 0 && args[0] != nil {
			return arg(0)
		}
		return def
	}
	const space = " \t\n\r\f\v"
	texts := func(list1 []string) *list {
		l := &list{}
		for _, p := range list1[:min(len(list1), maxItems)] {
			l.items = append(l.items, p)
		}
		return l
	}
	digits := b != "" && strings.Trim(b, "0123456789") == ""
	switch name {
	case "strip":
		return strings.Trim(b, cut(space)), true, nil
	case "lstrip":
		return strings.TrimLeft(b, cut(space)), true, nil
	case "rstrip":
		return strings.TrimRight(b, cut(space)), true, nil
	case "lower", "casefold":
		return strings.ToLower(b), true, nil
	case "upper":
		return strings.ToUpper(b), true, nil
	case "capitalize":
		if b != "" {
			return strings.ToUpper(b[:1]) + strings.ToLower(b[1:]), true, nil
		}
		return b, true, nil
	case "startswith", "endswith":
		has := func(x string) bool {
			if name == "startswith" {
				return strings.HasPrefix(b, x)
			}
			return strings.HasSuffix(b, x)
		}
		if l, ok := first(args).(*list); ok {
			for _, x := range l.items {
				if has(pyShow(x)) {
					return true, true, nil
				}
			}
			return false, true, nil
		}
		return has(arg(0)), true, nil
	case "removeprefix":
		return strings.TrimPrefix(b, arg(0)), true, nil
	case "removesuffix":
		return strings.TrimSuffix(b, arg(0)), true, nil
	case "replace":
		if len(args) > 2 {
			n, _ := args[2].(integer)
			return strings.Replace(b, arg(0), arg(1), int(n)), true, nil
		}
		return strings.ReplaceAll(b, arg(0), arg(1)), true, nil
	case "split", "rsplit":
		n := -1
		if x, ok := at2(args, 1).(integer); ok {
			n = int(x)
		} else if x, ok := keys["maxsplit"].(integer); ok {
			n = int(x)
		}
		if len(args) == 0 || args[0] == nil {
			if n >= 0 {
				return nil, true, giveUp("a text that is split")
			}
			return texts(strings.Fields(b)), true, nil
		}
		if arg(0) == "" {
			return nil, true, raise("ValueError", "empty separator")
		}
		parts := strings.Split(b, arg(0))
		if n >= 0 && len(parts) > n+1 {
			if name == "split" {
				parts = append(parts[:n:n], strings.Join(parts[n:], arg(0)))
			} else {
				k := len(parts) - n
				parts = append([]string{strings.Join(parts[:k], arg(0))}, parts[k:]...)
			}
		}
		return texts(parts), true, nil
	case "partition", "rpartition":
		i := strings.Index(b, arg(0))
		if name == "rpartition" {
			i = strings.LastIndex(b, arg(0))
		}
		parts := []any{b, "", ""}
		switch {
		case i >= 0:
			parts = []any{b[:i], arg(0), b[i+len(arg(0)):]}
		case name == "rpartition":
			parts = []any{"", "", b}
		}
		return &list{items: parts, tuple: true}, true, nil
	case "isdigit", "isnumeric", "isdecimal":
		return digits, true, nil
	case "isalpha":
		return b != "" && strings.Trim(strings.ToLower(b), "abcdefghijklmnopqrstuvwxyz") == "", true, nil
	case "isspace":
		return b != "" && strings.Trim(b, space) == "", true, nil
	case "find", "rfind", "index", "rindex":
		from, part, ok := pyPart(b, args)
		if !ok {
			return dontKnow("where a text is"), true, nil
		}
		i := strings.Index(part, arg(0))
		if name[0] == 'r' {
			i = strings.LastIndex(part, arg(0))
		}
		if i >= 0 {
			i += from
		}
		if i < 0 && strings.HasSuffix(name, "index") {
			return nil, true, raise("ValueError", "substring not found")
		}
		return integer(i), true, nil
	case "count":
		_, part, ok := pyPart(b, args)
		if !ok {
			return dontKnow("how often a text is there"), true, nil
		}
		return integer(strings.Count(part, arg(0))), true, nil
	case "join":
		items, err := m.items(first(args), s)
		if err != nil {
			return nil, true, err
		}
		if o := opaqueAmong(items); o != nil {
			return dontKnow("a text with " + o.String()), true, nil
		}
		parts := make([]string, len(items))
		for i, x := range items {
			t, ok := x.(string)
			if !ok {
				return nil, true, mistaken(x, "", "TypeError", "sequence item "+strconv.Itoa(i)+": expected str instance")
			}
			parts[i] = t
		}
		return strings.Join(parts, b), true, nil
	case "read_text", "open", "exists", "is_file", "resolve", "read_bytes": // an argument that was made a path
		return m.pathMethod(pyPath(b), name, args)
	case "encode", "decode":
		return b, true, nil
	case "expandtabs":
		size := 8
		if n, ok := first(args).(integer); ok {
			size = int(n)
		}
		if size < 0 || size > 64 || strings.Contains(b, "\n") {
			return nil, true, giveUp("a text with tabs")
		}
		var out strings.Builder
		for _, r := range b {
			if r != '\t' {
				out.WriteRune(r)
				continue
			}
			if size > 0 {
				out.WriteString(strings.Repeat(" ", size-len([]rune(out.String()))%size))
			}
		}
		return out.String(), true, nil
	case "swapcase":
		return strings.Map(func(r rune) rune {
			if unicode.IsUpper(r) {
				return unicode.ToLower(r)
			}
			return unicode.ToUpper(r)
		}, b), true, nil
	case "title":
		up := true
		return strings.Map(func(r rune) rune {
			was := up
			if up = !unicode.IsLetter(r); was {
				return unicode.ToTitle(r)
			}
			return unicode.ToLower(r)
		}, b), true, nil
	case "format_map":
		if o, ok := first(args).(*object); ok {
			if m.method(o, "__missing__") != nil || m.method(o, "__getitem__") != nil {
				return nil, true, giveUp("a format that asks an object")
			}
			keys = map[string]any{}
			for _, k := range o.keys {
				keys[k] = o.cells[k].v
			}
			v, err := m.formatted(b, nil, keys, s, at)
			return v, true, err
		}
		if _, ok := first(args).(*envMap); ok {
			v, err := m.formatted(b, nil, m.envTexts(), s, at)
			return v, true, err
		}
		return nil, true, undecided("a format of what is not known")
	case "format":
		v, err := m.formatted(b, args, keys, s, at)
		return v, true, err
	case "islower", "isupper":
		return name == "islower" && b == strings.ToLower(b) || name == "isupper" && b == strings.ToUpper(b), true, nil
	}
	return nil, false, nil
}

func (m *machine) pyList(b *list, name string, args []any, keys map[string]any, s *scope, at spot) (any, bool, error) {
	grow := func(more []any) error {
		if len(b.items)+len(more) > maxItems {
			return spent("a list that is too long")
		}
		return nil
	}
	find := func() (int, bool) {
		for i, x := range b.items {
			same, ok := equals(x, first(args), true)
			if !ok {
				return 0, false
			}
			if same {
				return i, true
			}
		}
		return -1, true
	}
	switch name {
	case "popleft":
		if len(b.items) == 0 {
			return nil, true, raise("IndexError", "pop from an empty deque")
		}
		v := b.items[0]
		b.items = b.items[1:]
		return v, true, nil
	case "appendleft":
		b.items = append([]any{first(args)}, b.items...)
		return nil, true, grow(nil)
	case "append", "add":
		if i, ok := find(); name == "add" && ok && i >= 0 {
			return nil, true, nil
		}
		b.items = append(b.items, first(args))
		return nil, true, grow(nil)
	case "sort":
		if b.tuple || b.set || opaqueAmong(b.items) != nil {
			return nil, true, giveUp("a list that is sorted")
		}
		key := keys["key"]
		if key == nil {
			key = &function{native: func(_ *machine, _ any, a []any, _ map[string]any, _ spot) (any, error) { return first(a), nil }}
		}
		v, _, err := m.sortedBy(b, key, keys["reverse"], at)
		if l, ok := v.(*list); ok && err == nil {
			b.items = l.items
		}
		return nil, true, err
	case "extend", "update":
		items, err := m.items(first(args), s)
		if err != nil {
			return nil, true, err
		}
		b.items = append(b.items, items...)
		return nil, true, grow(nil)
	case "insert":
		i, ok := first(args).(integer)
		if !ok || len(args) < 2 {
			return nil, true, giveUp("a list that grows")
		}
		k := max(0, min(len(b.items), int(i)))
		b.items = slices.Insert(b.items, k, args[1])
		return nil, true, grow(nil)
	case "pop":
		k := len(b.items) - 1
		if i, ok := first(args).(integer); ok {
			if k = int(i); k < 0 {
				k += len(b.items)
			}
		}
		if k < 0 || k >= len(b.items) {
			return nil, true, raise("IndexError", "pop from empty list")
		}
		v := b.items[k]
		b.items = slices.Delete(slices.Clone(b.items), k, k+1)
		return v, true, nil
	case "index", "remove", "discard", "count":
		i, ok := find()
		if !ok {
			return dontKnow("where something is in a list"), true, nil
		}
		switch {
		case name == "count":
			n := 0
			for _, x := range b.items {
				same, ok := equals(x, first(args), true)
				if !ok {
					return dontKnow("how often something is in a list"), true, nil
				}
				if same {
					n++
				}
			}
			return integer(n), true, nil
		case i < 0 && name == "discard":
			return nil, true, nil
		case i < 0:
			return nil, true, raise("ValueError", "not in the list")
		case name == "index":
			return integer(i), true, nil
		}
		b.items = slices.Delete(slices.Clone(b.items), i, i+1)
		return nil, true, nil
	case "difference_update", "intersection_update", "symmetric_difference_update":
		items, err := m.items(first(args), s)
		if err != nil {
			return nil, true, err
		}
		v, err := setOperate(map[string]string{"difference_update": "-", "intersection_update": "&", "symmetric_difference_update": "^"}[name], b, &list{items: items, set: true})
		if l, ok := v.(*list); ok && err == nil {
			b.items = l.items
		}
		return nil, true, err
	case "issubset", "issuperset", "difference", "intersection", "union", "symmetric_difference", "isdisjoint":
		if !b.set || len(args) != 1 {
			break
		}
		items, err := m.items(first(args), s)
		if err != nil {
			return nil, true, err
		}
		op := map[string]string{"issubset": "<=", "issuperset": ">=", "difference": "-", "intersection": "&", "union": "|", "symmetric_difference": "^", "isdisjoint": "&"}[name]
		v, err := setOperate(op, b, &list{items: items, set: true})
		if l, ok := v.(*list); ok && err == nil && name == "isdisjoint" {
			return len(l.items) == 0, true, nil
		}
		return v, true, err
	case "copy":
		return &list{items: slices.Clone(b.items), tuple: b.tuple, set: b.set}, true, nil
	case "clear":
		b.items = nil
		return nil, true, nil
	case "reverse":
		slices.Reverse(b.items)
		return nil, true, nil
	}
	return nil, false, nil
}

// pyPlainNames are the names that every object of a class of Python 3.14 has.
const pyPlainNames = `__class__ __delattr__ __dict__ __dir__ __doc__ __eq__ __firstlineno__ __format__ __ge__ __getattribute__ __getstate__ __gt__ __hash__ __init__ __init_subclass__ __le__ __lt__
	__module__ __ne__ __new__ __reduce__ __reduce_ex__ __repr__ __setattr__ __sizeof__ __static_attributes__ __str__ __subclasshook__ __weakref__`

// pyLiteral is what ast.literal_eval makes of a text.
func (m *machine) pyLiteral(text string) (any, error) {
	text = strings.TrimSpace(text)
	if err := m.use(len(text) * 8); err != nil {
		return nil, err
	}
	f := code.ReadAs(code.Python, "", []byte(text), place.NewLines([]byte(text)))
	bad := f.Body == nil || len(f.Body.Kids) != 1 || !f.Body.Kids[0].Is(code.ExprStmt)
	if !bad {
		f.Body.Kids[0].Kid(0).Walk(func(k *code.Node) bool {
			switch k.Kind {
			case code.String, code.Number, code.True, code.False, code.Null, code.Array, code.Object, code.Pair, code.Unary:
			default:
				bad = true
			}
			return !bad
		})
	}
	if bad {
		return nil, raise("ValueError", "malformed node or string")
	}
	in := &scope{vars: map[string]*cell{}, module: &module{file: f, exports: newObject()}, this: undefined, own: true}
	in.module.top = in
	return m.eval(f.Body.Kids[0].Kid(0), in)
}

// pyTemplate is substitute of string.Template: $name, ${name} and $$.
func (m *machine) pyTemplate(o *object, name string, args []any, keys map[string]any, at spot) (any, error) {
	t, _ := o.get("template")
	text, ok := t.(string)
	if c, isContent := t.(*content); isContent {
		text, ok = c.text, true
	}
	if !ok {
		return dontKnow("a template"), nil
	}
	values := map[string]any{}
	if d, ok := first(args).(*object); ok {
		for _, k := range d.keys {
			values[k] = d.cells[k].v
		}
	} else if _, ok := first(args).(*envMap); ok {
		values = m.envTexts()
	} else if len(args) > 0 {
		return dontKnow("a template"), nil
	}
	maps.Copy(values, keys)
	var failed error
	unknown := false
	out := expand(strings.ReplaceAll(text, "$$", "\x00"), func(k string) string {
		v, ok := values[k]
		if !ok {
			if name == "safe_substitute" {
				return "$" + k
			}
			failed = raise("KeyError", k)
			return ""
		}
		s, err := m.pyText1(v, false, at)
		if err != nil {
			failed = err
		}
		text, isText := s.(string)
		unknown = unknown || !isText
		return text
	})
	if unknown && failed == nil {
		return dontKnow("a text with what is not known"), nil
	}
	return strings.ReplaceAll(out, "\x00", "$"), failed
}

// pyDotted is what a dotted path names: a module, or something in one.
func (m *machine) pyDotted(text string, s *scope) (any, error) {
	module, rest := text, []string{}
	for {
		if p, ok := m.e.Loader.Resolve(s.module.file, module, ""); ok && m.e.Loader.File(p) != nil {
			v, err := any(nil), error(nil)
			if v, err = m.load(p); err != nil {
				return nil, err
			}
			for _, k := range rest {
				if v, err = m.key(v, k, s, s.module.file.Body); err != nil {
					return nil, err
				}
			}
			return v, nil
		}
		i := strings.LastIndexByte(module, '.')
		if i < 0 {
			return nil, giveUp("%s, which is not in the tree", text)
		}
		rest = append([]string{module[i+1:]}, rest...)
		module = module[:i]
	}
}

// pyOptions is getopt.getopt (Python 3.14 library reference, "getopt").
func (m *machine) pyOptions(args []any, mixed bool) (any, error) {
	given, ok := first(args).(*list)
	short, isText := at2(args, 1).(string)
	if !ok || !isText || mixed {
		return nil, giveUp("the options of the command line")
	}
	long := map[string]bool{}
	if l, ok := at2(args, 2).(*list); ok {
		for _, x := range l.items {
			name := show(x)
			long[strings.TrimSuffix(name, "=")] = strings.HasSuffix(name, "=")
		}
	}
	opts := &list{}
	pair := func(name, v string) { opts.items = append(opts.items, &list{items: []any{name, v}, tuple: true}) }
	words := given.items
	wrong := func() (any, error) { return nil, raise("GetoptError", "an option that is not understood") }
	for len(words) > 0 {
		w, ok := words[0].(string)
		if !ok {
			return nil, giveUp("the options of the command line")
		}
		if w == "--" {
			words = words[1:]
			break
		}
		if len(w) < 2 || w[0] != '-' {
			break
		}
		words = words[1:]
		take := func() (string, bool) {
			if len(words) == 0 {
				return "", false
			}
			v, ok := words[0].(string)
			words = words[1:]
			return v, ok
		}
		if name, isLong := strings.CutPrefix(w, "--"); isLong {
			name, v, has := strings.Cut(name, "=")
			takes, known := long[name]
			if !known || has && !takes {
				return wrong()
			}
			if takes && !has {
				if v, ok = take(); !ok {
					return wrong()
				}
			}
			pair("--"+name, v)
			continue
		}
		for i := 1; i < len(w); i++ {
			at := strings.IndexByte(short, w[i])
			if at < 0 || w[i] == ':' {
				return wrong()
			}
			v := ""
			if at+1 < len(short) && short[at+1] == ':' {
				if v = w[i+1:]; v == "" {
					if v, ok = take(); !ok {
						return wrong()
					}
				}
				pair("-"+w[i:i+1], v)
				break
			}
			pair("-"+w[i:i+1], v)
		}
	}
	return &list{items: []any{opts, &list{items: slices.Clone(words)}}, tuple: true}, nil
}

// ends is the error of what was loaded where that ends the program; what could only
// not be followed does not.
func ends(_ any, err error) error {
	switch err := err.(type) {
	case *thrown:
		if o, ok := err.v.(*object); ok && o.class != nil && o.class.builtin && o.fault && slips[o.class.name] {
			return nil
		}
		return err
	case *exit:
		return err
	}
	return nil
}
