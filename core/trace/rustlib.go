package trace

import (
	"path"
	"slices"
	"strconv"
	"strings"

	"ubique/core/rust"
)

// rsMakers are functions that give what they are given: boxes, and what is looked
// through (Rust 1.91, modules std::boxed, std::rc, std::sync; Actix Web 4, web::Data).
var rsMakers = words("Box.new Box.pin Box.from Arc.new Arc.from Rc.new Rc.from Arc.clone Rc.clone Cow.Borrowed Cow.Owned Cow.from Pin.new Data.new PathBuf.from Path.new OsString.from OsStr.new String.from_utf8_lossy Wrapping Reverse identity ManuallyDrop.new IpAddr.V4 IpAddr.V6 SocketAddr.V4 SocketAddr.V6 Box.leak ready drop black_box BufReader.new Some.as_ref Extension")

// rsHolders are those that several owners may have.
var rsHolders = map[string]string{"Mutex.new": "Mutex", "RwLock.new": "RwLock", "RefCell.new": "RefCell", "Cell.new": "Cell", "OnceLock.new": "OnceLock", "OnceCell.new": "OnceCell", "OnceLock.const_new": "OnceLock", "OnceCell.const_new": "OnceCell"}

// rsBuiltin calls a function of the standard library or of a crate.
func (m *machine) rsBuiltin(p string, args []any, types []*rsT, head, want *rsT, s *rsScope, at rsAt) (any, error) {
	two := rsTwo(p)
	arg := first(args)
	of, last, _ := strings.Cut(two, ".")
	if last == "" {
		of, last = "", of
	}
	typ := func(i int) *rsT {
		if i < len(types) {
			return types[i]
		}
		return nil
	}
	switch {
	case rsMakers[two] || two == "Ok" || two == "Some":
		if two == "drop" {
			if o, ok := rsBare(arg).(*opaque); ok && rsListener(o) && len(m.calls) > 0 {
				m.calls = m.calls[:len(m.calls)-1]
			}
			return nil, nil
		}
		if two == "Ok" || two == "Some" {
			return rsMade(map[string]string{"Ok": "Result", "Some": "Option"}[two], two, arg), nil
		}
		return arg, nil
	case two == "Err":
		return rsMade("Result", "Err", arg), nil
	case rsHolders[two] != "":
		if len(args) == 0 {
			return &rsShared{cell: &rsCell{}, kind: rsHolders[two], unset: true}, nil
		}
		return &rsShared{cell: &rsCell{v: arg}, kind: rsHolders[two]}, nil
	case strings.HasPrefix(of, "Atomic") && last == "new":
		t := strings.ToLower(strings.TrimPrefix(of, "Atomic"))
		return &rsShared{cell: &rsCell{v: rsTyped(arg, &rsT{name: t})}, kind: "Atomic"}, nil
	case (of == "LazyLock" || of == "Lazy" || of == "LazyCell") && last == "new":
		return m.rsCall(arg, nil, want.arg(0), at)
	}
	switch two {
	case "env.var", "env.var_os", "dotenvy.var", "dotenv.var":
		if two != "env.var" && two != "env.var_os" {
			if err := m.rsDotenv(".env", false); err != nil {
				return nil, err
			}
		}
		name, ok := rsOpened(arg).(string)
		if !ok {
			return dontKnow("a variable whose name is not known"), nil
		}
		v, set := m.lookup(name, m.rsSpot(at))
		switch {
		case two == "env.var_os":
			return rsMaybe(v, set), nil
		case set:
			return rsOk(v), nil
		}
		return rsMade("Result", "Err", rsMade("VarError", "NotPresent")), nil
	case "env.vars", "env.vars_os":
		var l []any
		for _, k := range m.envKeys() {
			l = append(l, rsTupleOf(k, m.env.text(k)))
		}
		return rsOver(l), nil
	case "env.set_var", "env.remove_var":
		k, ok := rsOpened(arg).(string)
		if !ok {
			return nil, undecided("a variable whose name is not known")
		}
		if last == "remove_var" {
			m.env.drop(k)
			return nil, nil
		}
		v, ok := rsOpened(at2(args, 1)).(string)
		if !ok {
			return nil, undecided("what the variable %s is set to", k)
		}
		m.env.put(k, v)
		return nil, nil
	case "env.args", "env.args_os":
		return rsOver(m.argv()), nil
	case "env.current_dir":
		return rsOk(path.Join(root, m.e.Dir)), nil
	case "env.current_exe":
		return dontKnow("where the program lies"), nil
	case "process.exit", "process.abort":
		return nil, &exit{}
	case "String.new", "String.with_capacity", "PathBuf.new":
		return "", nil
	case "String.from_utf8":
		if t, ok := rsOpened(arg).(string); ok {
			return rsOk(t), nil
		}
		return dontKnow("a text of bytes"), nil
	case "String.from_iter", "Vec.from_iter", "HashMap.from_iter", "BTreeMap.from_iter", "HashSet.from_iter":
		it, err := m.rsIterate(arg, at)
		if err != nil || it == nil {
			return nil, undecided("what is collected")
		}
		l, err := m.rsRest(it)
		if err != nil {
			return nil, err
		}
		return m.rsCollect(l, &rsT{name: of}, at)
	case "Vec.new", "Vec.with_capacity", "VecDeque.new", "VecDeque.with_capacity":
		return &rsList{}, nil
	case "HashSet.new", "BTreeSet.new", "HashSet.with_capacity":
		return &rsList{set: true}, nil
	case "HashMap.new", "HashMap.with_capacity", "IndexMap.new":
		return newRsMap(false), nil
	case "BTreeMap.new":
		return newRsMap(true), nil
	case "HashSet.from", "BTreeSet.from", "Vec.from", "VecDeque.from":
		it, err := m.rsIterate(arg, at)
		if err != nil || it == nil {
			return arg, err
		}
		l, err := m.rsRest(it)
		if err != nil {
			return nil, err
		}
		return m.rsCollect(l, &rsT{name: of}, at)
	case "Ipv4Addr.new", "Ipv6Addr.new":
		return rsAddress(args), nil
	case "SocketAddr.new", "SocketAddrV4.new", "SocketAddrV6.new":
		return m.rsSocket(arg, at2(args, 1)), nil
	case "cmp.max", "cmp.min", "max", "min":
		b := at2(args, 1)
		if t := rsTypeOf(arg); t != nil {
			b = rsTyped(b, t)
		} else {
			arg = rsTyped(arg, rsTypeOf(b))
		}
		c, ok := rsCompare(arg, b)
		if !ok {
			return dontKnow("which of two is more"), nil
		}
		if (c > 0) == (last == "max") {
			return arg, nil
		}
		return b, nil
	case "mem.take", "mem.replace", "mem.swap", "take", "replace":
		if len(p) > 0 && !strings.Contains(p, "mem.") {
			break
		}
		r, ok := arg.(*rsRef)
		if !ok {
			break
		}
		old := r.cell.v
		switch last {
		case "take":
			v, err := m.rsDefault(rsTypeOf(old))
			r.cell.v = v
			return old, err
		case "replace":
			r.cell.v = at2(args, 1)
			return old, nil
		}
		if o, ok := at2(args, 1).(*rsRef); ok {
			r.cell.v, o.cell.v = o.cell.v, r.cell.v
			return nil, nil
		}
	case "fs.read_to_string", "fs.read":
		text, known, there := m.rsFile(arg)
		switch {
		case !known:
			return dontKnow("what a file holds"), nil
		case there:
			return rsOk(text), nil
		}
		if t, ok := rsOpened(arg).(string); ok && strings.HasPrefix(t, "/") {
			if _, in := m.treePath(t); !in {
				return dontKnow("what the file " + t + " holds"), nil
			}
		}
		return rsErr("io::Error", "No such file or directory (os error 2)"), nil
	case "File.open":
		text, known, there := m.rsFile(arg)
		if !known {
			return dontKnow("what a file holds"), nil
		}
		if there {
			return rsOk(text), nil
		}
		return rsErr("io::Error", "No such file or directory (os error 2)"), nil
	case "fs.metadata", "fs.exists":
		if t, ok := rsOpened(arg).(string); ok {
			if yes := m.there(t, true, true); last == "exists" {
				return rsOk(yes), nil
			} else if !yes {
				return rsErr("io::Error", "No such file or directory (os error 2)"), nil
			}
		}
	case "fs.create_dir_all", "fs.remove_file", "fs.write", "fs.create_dir":
		if last == "remove_file" {
			if t, ok := rsOpened(arg).(string); ok && !m.there(t, true, false) && !strings.HasPrefix(t, "/") {
				return rsErr("io::Error", "No such file or directory (os error 2)"), nil
			}
		}
		return rsOk(nil), nil
	case "io.stdin", "io.stdout", "io.stderr", "stdin", "stdout":
		return dontKnow("the terminal"), nil
	case "thread.spawn", "tokio.spawn", "task.spawn", "task.spawn_blocking", "task.spawn_local", "rt.spawn", "spawn", "actix_web.spawn", "thread.spawn_scoped", "smol.spawn":
		return m.rsSpawn(arg, at)
	case "thread.scope":
		n := m.rs().threads
		v, err := m.rsCall(arg, []any{&opaque{path: "std.thread.Scope"}}, want, at)
		if err == nil && m.rs().threads > n { // it waits for them
			err = &exit{stays: true}
		}
		return v, err
	case "task.block_on", "executor.block_on", "smol.block_on", "block_on", "tokio_uring.start", "futures.executor.block_on", "System.block_on":
		return m.rsWait(rsBare(arg))
	case "thread.sleep", "time.sleep", "task.sleep", "thread.yield_now", "task.yield_now", "time.interval", "Timer.after", "sleep":
		return nil, nil
	case "thread.park":
		if len(m.calls) > 0 || m.rs().threads > 0 {
			return nil, &exit{stays: true}
		}
	case "mpsc.channel", "mpsc.sync_channel", "mpsc.unbounded_channel", "oneshot.channel", "broadcast.channel", "watch.channel", "channel", "unbounded_channel", "sync_channel", "crossbeam_channel.unbounded", "channel.bounded", "channel.unbounded", "flume.unbounded", "flume.bounded":
		c := &rsChan{}
		if of == "watch" && len(args) > 0 {
			return rsTupleOf(c, dontKnow("what a channel gives")), nil
		}
		return rsTupleOf(c, c), nil
	case "iter.once":
		return rsOver([]any{arg}), nil
	case "iter.empty":
		return rsOver(nil), nil
	case "iter.repeat":
		return &rsIter{next: func() (any, bool, error) { return m.rsClone(arg), true, m.step() }}, nil
	case "iter.from_fn", "iter.successors":
		f, now := arg, any(nil)
		if last == "successors" {
			f, now = at2(args, 1), arg
		}
		return &rsIter{next: func() (any, bool, error) {
			var d *rsData
			if last == "from_fn" {
				v, err := m.rsCall(f, nil, nil, at)
				if err != nil {
					return nil, false, err
				}
				d, _ = rsBare(v).(*rsData)
			} else {
				d, _ = rsBare(now).(*rsData)
			}
			if d == nil {
				return nil, false, undecided("what comes next")
			}
			in, more := d.holding()
			if more && last == "successors" {
				v, err := m.rsCall(f, []any{in}, nil, at)
				if err != nil {
					return nil, false, err
				}
				now = v
			}
			return in, more, m.step()
		}}, nil
	case "Default.default":
		return m.rsDefault(want)
	case "anyhow.Error.msg", "Error.msg", "Error.new", "Error.other", "Error.from", "io.Error.new", "Report.msg":
		t := rsDebug(at2(args, len(args)-1))
		return &rsData{typ: "Error", names: []string{"\x00text"}, fields: []*rsCell{{v: t}}}, nil
	case "dotenv.dotenv", "dotenvy.dotenv", "dotenv", "dotenvy.dotenv_override", "dotenvy.from_filename", "dotenv.from_filename", "dotenvy.from_path", "dotenv.from_path", "dotenvy.from_filename_override", "dotenvy.from_path_override":
		if len(args) == 0 && two == "dotenv" && !strings.Contains(p, "dotenv") {
			break
		}
		file := any(".env")
		if len(args) > 0 {
			file = rsOpened(arg)
		}
		name, ok := file.(string)
		if !ok {
			return nil, undecided("which dotenv file is read")
		}
		return m.rsDotenvResult(name, strings.HasSuffix(last, "_override"))
	case "envy.from_env", "envy.from_iter":
		return m.rsEnvy("", rsFirstType(typ(0), want.arg(0)), at)
	case "envy.prefixed":
		prefix, ok := rsOpened(arg).(string)
		if !ok {
			return nil, undecided("a prefix that is not known")
		}
		return &rsData{typ: "config::Source", variant: "envy", fields: []*rsCell{{v: prefix}}}, nil
	case "serde_json.from_str", "serde_json.from_slice", "serde_json.from_reader", "toml.from_str", "serde_yaml.from_str", "serde_yml.from_str", "serde_yaml.from_reader", "json5.from_str", "toml.from_slice", "serde_json.from_value":
		return m.rsFromText(of, arg, rsFirstType(typ(0), want.arg(0)), at)
	case "Config.builder", "Config.default":
		if strings.HasPrefix(p, "config.") {
			return &rsData{typ: "config::Builder", fields: []*rsCell{{v: &rsList{}}}}, nil
		}
	case "File.with_name", "File.from", "Environment.with_prefix", "Environment.default", "File.new", "File.from_str":
		if strings.HasPrefix(p, "config.") {
			return &rsData{typ: "config::Source", variant: of + "." + last, names: []string{"of", "separator", "prefix_separator", "required"}, fields: []*rsCell{{v: arg}, {v: ""}, {v: ""}, {v: true}}}, nil
		}
	case "Command.new", "App.new", "Arg.new", "Arg.with_name":
		if strings.HasPrefix(p, "clap.") || strings.HasPrefix(p, "structopt.") {
			return m.rsClapNew(of, arg), nil
		}
		if name, ok := rsOpened(arg).(string); ok && m.e.Launch != nil && of == "Command" && (p == "Command.new" || strings.HasPrefix(p, "std.process.") || strings.HasPrefix(p, "tokio.process.") || p == "process.Command.new") {
			return &rsData{typ: "process::Command", names: []string{"words", "env", "dir", "asynchronous"}, fields: []*rsCell{{v: &list{items: []any{name}}}, {}, {}, {v: strings.HasPrefix(p, "tokio.")}}}, nil
		}
	case "process.id", "random", "rand.random":
		return dontKnow("a number that differs from run to run"), nil
	}
	// What a type makes of something else.
	if t := head; t == nil && of != "" && (rsWidth[of] != 0 || of[0] >= 'A' && of[0] <= 'Z' || of == "str" || of == "char" || of == "bool") {
		head = &rsT{name: of}
	}
	if head != nil {
		switch last {
		case "from", "into":
			return m.rsFrom(head, arg, at)
		case "try_from":
			if n, ok := rsOpened(arg).(rsInt); ok && rsWidth[head.name] != 0 {
				if !rsFits(n.n, head.name) {
					return rsErr("TryFromIntError", "out of range integral type conversion attempted"), nil
				}
				return rsOk(rsInt{n.n, head.name}), nil
			}
		case "from_str":
			return m.rsParse(arg, head, at)
		case "new", "default", "with_capacity":
			if len(args) == 0 {
				v, err := m.rsDefault(head)
				if o, ok := v.(*opaque); err == nil && !(ok && o.path == "") {
					return v, nil
				}
			} else if strings.HasPrefix(head.name, "NonZero") {
				n, ok := rsOpened(arg).(rsInt)
				return rsMaybe(arg, ok && n.n != 0), nil
			}
		case "from_str_radix":
			t, ok := rsOpened(arg).(string)
			base, isInt := rsOpened(at2(args, 1)).(rsInt)
			if ok && isInt && base.n >= 2 && base.n <= 36 {
				n, err := strconv.ParseInt(t, int(base.n), 64)
				if err != nil || !rsFits(n, head.name) {
					return rsErr("ParseIntError", "invalid digit found in string"), nil
				}
				return rsOk(rsInt{n, head.name}), nil
			}
		case "from_digit", "from_u32":
			n, ok := rsOpened(arg).(rsInt)
			if ok && last == "from_u32" {
				return rsSome(character(rune(n.n))), nil
			}
		}
	}
	if head != nil || rsTraits[of] { // a method by its path
		if len(args) > 0 && known(rsOpened(arg)) && (head == nil || head.def == nil) && (of == "str" || rsWidth[of] != 0 || rsOwn[of] || rsTraits[of]) {
			if meth := m.rsMethodOf(arg, last); meth != nil {
				return m.rsMethodCall(meth, arg, args[1:], want, nil, at)
			}
			return m.rsMethod(&rsCell{v: arg}, last, args[1:], types, want, s, at)
		}
		if o, ok := rsOpened(arg).(*opaque); ok && len(args) > 0 && (rsOwn[of] || rsTraits[of] || of == "str") {
			return m.rsOpaqueMethod(o, last, args[1:], want, at)
		}
	}
	return m.rsOutside(&opaque{path: p}, args, at)
}

func rsFirstType(a, b *rsT) *rsT {
	if a != nil {
		return a
	}
	return b
}

// rsTraits and rsOwn are traits and types of the standard library whose methods are
// called by their paths.
var (
	rsTraits = words("ToString Into AsRef Clone Iterator ToOwned IntoIterator Borrow PartialEq Ord PartialOrd Deref ToSocketAddrs FromStr TryInto AsMut Write Read")
	rsOwn    = words("String Option Result Vec char Path PathBuf IpAddr Ipv4Addr SocketAddr HashMap BTreeMap HashSet OsStr OsString VecDeque bool Mutex RwLock Rc Arc Box Cell RefCell")
)

// rsMacro is what a macro makes.
func (m *machine) rsMacro(e *rust.Expr, s *rsScope, want *rsT, at rsAt) (any, error) {
	name := e.Path[len(e.Path)-1]
	text := func(from int) (string, bool, error) {
		if len(e.Kids) <= from {
			return "", true, nil
		}
		v, err := m.rsFormat(e.Kids[from:], s, at)
		if err != nil {
			return "", false, err
		}
		t, ok := v.(string)
		return t, ok, nil
	}
	if en := m.rsFind(e.Path, s.fr.mod, s.fr); en.item != nil && len(en.item.Rules) > 0 {
		made := e.Expand(en.item.Rules)
		if made == nil {
			return nil, giveUp("the macro %s", name)
		}
		if err := m.use(int(made.End - made.Off)); err != nil {
			return nil, err
		}
		if m.depth++; m.depth > maxDepth {
			return nil, spent("macros that call each other without end")
		}
		defer func() { m.depth-- }()
		return m.rsEval(made, s, want)
	}
	switch name {
	case "println", "eprintln", "print", "eprint", "info", "warn", "error", "debug", "trace", "log", "event", "span", "debug_assert", "debug_assert_eq", "debug_assert_ne", "compile_error", "info_span", "error_span":
		return nil, nil
	case "format", "format_args":
		v, err := m.rsFormat(e.Kids, s, at)
		return v, err
	case "panic", "todo", "unimplemented", "unreachable":
		t, _, err := text(0)
		if err != nil {
			t = name
		}
		return nil, certainly("panic", t)
	case "bail":
		t, _, err := text(0)
		if err != nil {
			t = name
		}
		return nil, &rsLeave{kind: "return", v: rsErr("Error", t)}
	case "anyhow", "eyre", "format_err":
		t, _, _ := text(0)
		return &rsData{typ: "Error", names: []string{"\x00text"}, fields: []*rsCell{{v: t}}}, nil
	case "ensure", "assert":
		if len(e.Kids) == 0 {
			break
		}
		ok, known, err := m.rsTest(e.Kids[0], s)
		if err != nil {
			return nil, err
		}
		if known && !ok {
			t, _, _ := text(1)
			if name == "ensure" {
				return nil, &rsLeave{kind: "return", v: rsErr("Error", t)}
			}
			return nil, certainly("panic", "assertion failed")
		}
		return nil, nil
	case "assert_eq", "assert_ne":
		if len(e.Kids) < 2 {
			break
		}
		a, err := m.rsEval(e.Kids[0], s, nil)
		if err != nil {
			return nil, err
		}
		b, err := m.rsEval(e.Kids[1], s, rsTypeOf(a))
		if err != nil {
			return nil, err
		}
		if c, ok := rsCompare(a, b); ok && (c == 0) != (name == "assert_eq") {
			return nil, certainly("panic", "assertion failed")
		}
		return nil, nil
	case "vec", "smallvec", "array":
		a := *e
		a.Kind = rust.ArrayExpr
		return m.rsArray(&a, s, want)
	case "matches":
		if e.Pat == nil || len(e.Kids) == 0 {
			break
		}
		c, byRef, err := m.rsSubject(e.Kids[0], s, nil)
		if err != nil {
			return nil, err
		}
		in := s.inner()
		ok, known := m.rsBind(e.Pat, c.v, in, c, byRef)
		if !known {
			return dontKnow("whether a pattern fits"), nil
		}
		if ok && len(e.Kids) > 1 {
			if ok, known, err = m.rsTest(e.Kids[1], in); err != nil || !known {
				return dontKnow("whether a pattern fits"), err
			}
		}
		return ok, nil
	case "write", "writeln":
		if len(e.Kids) == 0 {
			break
		}
		c, err := m.rsHolder(e.Kids[0], s, nil)
		if err != nil {
			return nil, err
		}
		for r, ok := c.v.(*rsRef); ok; r, ok = c.v.(*rsRef) {
			c = r.cell
		}
		switch to := c.v.(type) {
		case *rsText:
			t, ok, err := text(1)
			if err != nil {
				return nil, err
			}
			if !ok {
				return nil, undecided("a text that is not known")
			}
			if to.b.WriteString(t); name == "writeln" {
				to.b.WriteString("\n")
			}
		case string:
			v, err := m.rsFormat(e.Kids[1:], s, at)
			if err != nil {
				return nil, err
			}
			t, ok := v.(string)
			if name == "writeln" {
				t += "\n"
			}
			if c.v = to + t; !ok {
				c.v = v
			}
		}
		return rsOk(nil), nil
	case "dbg":
		if len(e.Kids) == 1 {
			return m.rsEval(e.Kids[0], s, want)
		}
	case "concat", "stringify", "file", "line", "column", "module_path":
		out := ""
		for _, k := range e.Kids {
			if k.Kind != rust.LitExpr || name != "concat" {
				return dontKnow("a text of the compiler"), nil
			}
			out += k.Text
		}
		return out, nil
	case "env", "option_env":
		if len(e.Kids) > 0 && e.Kids[0].Kind == rust.LitExpr {
			d := m.e.Loader.Data(path.Join(m.rsFolder(), "Cargo.toml"))
			for of, key := range map[string]string{"CARGO_PKG_NAME": "name", "CARGO_PKG_VERSION": "version", "CARGO_PKG_DESCRIPTION": "description"} {
				if v, ok := d.Get("package", key).Scalar(); ok && e.Kids[0].Text == of && name == "env" {
					return v, nil
				}
			}
			if e.Kids[0].Text == "CARGO_MANIFEST_DIR" && name == "env" {
				return path.Join(root, m.rsFolder()), nil
			}
		}
		return dontKnow("a variable that is read while it is built"), nil
	case "include_str", "include_bytes":
		if len(e.Kids) == 1 && e.Kids[0].Kind == rust.LitExpr {
			if t, ok := m.e.Loader.Text(path.Join(path.Dir(at.f.Name), e.Kids[0].Text)); ok {
				return t, nil
			}
		}
		return dontKnow("what a file holds"), nil
	case "cfg":
		if len(e.Kids) == 1 && e.Kids[0].Kind == rust.PathExpr {
			switch e.Kids[0].Path[0] {
			case "test", "windows":
				return false, nil
			case "unix":
				return true, nil
			}
		}
		return dontKnow("how it is built"), nil
	case "join", "try_join":
		return m.rsJoin(e, s, name)
	case "select":
		return m.rsSelect(e, s, want)
	case "pin":
		return nil, nil
	case "value_parser":
		if len(e.Kids) == 1 && e.Kids[0].Kind == rust.PathExpr {
			return &rsData{typ: "value_parser", variant: e.Kids[0].Path[len(e.Kids[0].Path)-1]}, nil
		}
		return dontKnow("how a value is read"), nil
	case "crate_name", "crate_version", "crate_authors", "crate_description", "json", "routes", "html", "sql", "query", "migrate", "file_path", "ctrl_c":
		return dontKnow("what the macro " + name + " makes"), nil
	}
	for _, k := range e.Kids { // what is worked out for it
		if _, err := m.rsEval(k, s, nil); err != nil {
			return nil, err
		}
	}
	return dontKnow("what the macro " + name + " makes"), nil
}

// rsJoin waits for several.
func (m *machine) rsJoin(e *rust.Expr, s *rsScope, name string) (any, error) {
	out := &rsList{tuple: true}
	stays := false
	for _, k := range e.Kids {
		v, err := m.rsEval(k, s, nil)
		if err != nil {
			return nil, err
		}
		if v, err = m.rsWait(rsBare(v)); err != nil {
			x, ok := err.(*exit)
			if !ok || !x.stays {
				return nil, err
			}
			stays = true
		}
		if d, ok := rsBare(v).(*rsData); ok && name == "try_join" && !stays {
			in, well := d.holding()
			if !well {
				return d, nil
			}
			v = in
		}
		out.items = append(out.items, &rsCell{v: v})
	}
	if stays {
		return nil, &exit{stays: true}
	}
	if name == "try_join" {
		return rsOk(out), nil
	}
	return out, nil
}

// rsSelect waits for the first of several: those that go on for good are not it.
func (m *machine) rsSelect(e *rust.Expr, s *rsScope, want *rsT) (any, error) {
	if len(e.Branches) == 0 {
		return nil, giveUp("a choice between futures")
	}
	for _, b := range e.Branches {
		if b.From == nil {
			continue
		}
		in := s.inner()
		v, err := m.rsEval(b.From, in, nil)
		if err == nil {
			v, err = m.rsWait(rsBare(v))
		}
		if x, ok := err.(*exit); ok && x.stays {
			continue
		}
		if err != nil {
			return nil, err
		}
		if o, ok := rsOpened(v).(*opaque); ok && o.path != "" {
			if len(m.calls) > 0 {
				continue
			}
			return nil, undecided("which of several comes first")
		}
		if ok, known := m.rsBind(b.Pat, v, in, nil, false); !known {
			return nil, undecided("which of several comes first")
		} else if ok {
			return m.rsEval(b.Body, in, want)
		}
	}
	return nil, &exit{stays: true}
}

// rsFormat is a text of a form and what goes into it (Rust 1.91, std::fmt).
func (m *machine) rsFormat(kids []*rust.Expr, s *rsScope, at rsAt) (any, error) {
	if len(kids) == 0 {
		return "", nil
	}
	if kids[0].Kind == rust.MacroExpr { // concat!(…)
		v, err := m.rsEval(kids[0], s, nil)
		t, ok := v.(string)
		if err != nil || !ok {
			return dontKnow("a text whose form is not written out"), err
		}
		kids = append([]*rust.Expr{{Kind: rust.LitExpr, Lit: rust.TextLit, Text: t}}, kids[1:]...)
	}
	if kids[0].Kind != rust.LitExpr || kids[0].Lit != rust.TextLit {
		return dontKnow("a text whose form is not written out"), nil
	}
	form := kids[0].Text
	var args []any
	named := map[string]any{}
	for _, k := range kids[1:] {
		of := k
		if k.Kind == rust.AssignExpr {
			of = k.Kids[1]
		}
		v, err := m.rsEval(of, s, nil)
		if err != nil {
			return nil, err
		}
		args = append(args, v)
		if k.Kind == rust.AssignExpr && k.Kids[0].Kind == rust.PathExpr {
			named[k.Kids[0].Path[0]] = v
		}
	}
	value := func(name string) (any, error) {
		if i, err := strconv.Atoi(name); err == nil {
			if i < len(args) {
				return args[i], nil
			}
			return nil, giveUp("a text that needs more than it is given")
		}
		if v, ok := named[name]; ok {
			return v, nil
		}
		return m.rsPath(&rust.Expr{Kind: rust.PathExpr, Path: []string{name}}, s, nil)
	}
	var b strings.Builder
	next := 0
	unknown := ""
	for i := 0; i < len(form); i++ {
		c := form[i]
		if (c == '{' || c == '}') && i+1 < len(form) && form[i+1] == c {
			b.WriteByte(c)
			i++
			continue
		}
		if c != '{' {
			b.WriteByte(c)
			continue
		}
		end := strings.IndexByte(form[i:], '}')
		if end < 0 {
			return nil, giveUp("a text whose form is not read")
		}
		name, how, _ := strings.Cut(form[i+1:i+end], ":")
		i += end
		name = strings.TrimSpace(name)
		if name == "" {
			name = strconv.Itoa(next)
			next++
		}
		v, err := value(name)
		if err != nil {
			return nil, err
		}
		t, err := m.rsShow(v, how, at)
		if err != nil {
			return nil, err
		}
		text, ok := t.(string)
		if !ok {
			unknown = t.(*opaque).String()
			continue
		}
		b.WriteString(text)
		if b.Len() > maxText {
			return nil, spent("a text that grows")
		}
	}
	if unknown != "" {
		return dontKnow("a text with " + unknown), nil
	}
	return b.String(), m.use(b.Len())
}

// rsShow writes a value in a form; what is not known is given as such.
func (m *machine) rsShow(v any, how string, at rsAt) (any, error) {
	v = rsOpened(v)
	how = strings.TrimSpace(how)
	fill, width, align := " ", 0, byte(0)
	precision := -1
	if i := strings.IndexAny(how, "<>^"); i >= 0 && i <= 4 {
		if align = how[i]; i > 0 {
			fill = how[:i]
		}
		how = how[i+1:]
	}
	how = strings.TrimPrefix(how, "+")
	alternate := strings.HasPrefix(how, "#")
	how = strings.TrimPrefix(how, "#")
	if strings.HasPrefix(how, "0") && len(how) > 1 {
		fill, align = "0", '>'
		how = how[1:]
	}
	for len(how) > 0 && how[0] >= '0' && how[0] <= '9' {
		width = min(width*10+int(how[0]-'0'), 200)
		how = how[1:]
	}
	if rest, ok := strings.CutPrefix(how, "."); ok {
		precision = 0
		for len(rest) > 0 && rest[0] >= '0' && rest[0] <= '9' {
			precision = min(precision*10+int(rest[0]-'0'), 200)
			rest = rest[1:]
		}
		how = rest
	}
	var text string
	switch x := v.(type) {
	case *opaque:
		return x, nil
	case string:
		if text = x; how == "?" {
			text = strconv.Quote(x)
		}
		if precision >= 0 {
			text = string([]rune(text)[:min(precision, len([]rune(text)))])
		}
	case rsInt:
		base := map[string]int{"x": 16, "X": 16, "b": 2, "o": 8}[how]
		if base == 0 {
			base = 10
		}
		text = strconv.FormatInt(x.n, base)
		if how == "X" {
			text = strings.ToUpper(text)
		}
		if alternate && base != 10 {
			text = map[int]string{16: "0x", 2: "0b", 8: "0o"}[base] + text
		}
		if align == 0 {
			align = '>'
		}
	case float64:
		text = strconv.FormatFloat(x, 'f', precision, 64)
		if how == "?" && !strings.Contains(text, ".") {
			text += ".0"
		}
		if align == 0 {
			align = '>'
		}
	case *rsData:
		t, err := m.rsShowData(x, how, at)
		if err != nil {
			return nil, err
		}
		var ok bool
		if text, ok = t.(string); !ok {
			return t, nil
		}
	default:
		if text = rsDebug(v); how != "?" {
			switch v.(type) {
			case bool, character, rsIP, rsSock, nil:
			default:
				return dontKnow("a value as text"), nil
			}
			if c, ok := v.(character); ok {
				text = string(rune(c))
			}
		}
	}
	for n := width - len([]rune(text)); n > 0; n-- {
		switch {
		case align == '>', align == '^' && n%2 == 1:
			text = fill + text
		default:
			text += fill
		}
	}
	return text, nil
}

func (m *machine) rsShowData(x *rsData, how string, at rsAt) (any, error) {
	trait := "Display"
	if how == "?" {
		trait = "Debug"
	}
	if x.def != nil {
		for _, meth := range x.def.methods["fmt"] {
			if meth.trait == trait {
				to := &rsText{}
				if _, err := m.rsMethodCall(meth, x, []any{to}, nil, nil, at); err != nil {
					return nil, err
				}
				return to.b.String(), nil
			}
		}
		if trait == "Display" {
			if x.def.traits["Display"] && x.variant != "" { // strum 0.27, "Display"
				if style := rsRenameAll(x.def.item.Attrs, "strum", "serialize_all"); style != "" {
					return rsStyled(x.variant, style), nil
				}
				return x.variant, nil
			}
			return dontKnow("a value as text"), nil
		}
		return rsDebug(x), nil
	}
	if len(x.names) == 1 && x.names[0] == "\x00text" {
		return x.fields[0].v, nil
	}
	if trait == "Debug" {
		return rsDebug(x), nil
	}
	return dontKnow("a value as text"), nil
}

// rsDebug writes a value as {:?} does, roughly: for people.
func rsDebug(v any) string { return rsDebugIn(v, &reach{}) }

func rsDebugIn(v any, r *reach) string {
	if !r.in() {
		return "…"
	}
	defer r.out()
	switch x := rsOpened(v).(type) {
	case nil:
		return "()"
	case string:
		return strconv.Quote(x)
	case rsInt:
		return strconv.FormatInt(x.n, 10)
	case float64:
		return strconv.FormatFloat(x, 'f', -1, 64)
	case bool:
		return strconv.FormatBool(x)
	case character:
		return "'" + string(rune(x)) + "'"
	case rsIP:
		return x.a.String()
	case rsSock:
		return x.a.String()
	case *rsList:
		parts := make([]string, len(x.items))
		for i, c := range x.items {
			parts[i] = rsDebugIn(c.v, r)
		}
		if x.tuple {
			return "(" + strings.Join(parts, ", ") + ")"
		}
		return "[" + strings.Join(parts, ", ") + "]"
	case *rsData:
		if len(x.names) == 1 && x.names[0] == "\x00text" {
			t, _ := x.fields[0].v.(string)
			return x.typ + ": " + t
		}
		name := x.variant
		if name == "" {
			name = x.typ
		}
		var parts []string
		for i, f := range x.fields {
			p := rsDebugIn(f.v, r)
			if i < len(x.names) {
				p = x.names[i] + ": " + p
			}
			parts = append(parts, p)
		}
		switch {
		case len(parts) == 0:
			return name
		case len(x.names) > 0:
			return name + " { " + strings.Join(parts, ", ") + " }"
		}
		return name + "(" + strings.Join(parts, ", ") + ")"
	case *opaque:
		return x.String()
	}
	return "…"
}

// rsDotenv sets what stands in a dotenv file (dotenvy 0.15: what is set already stays,
// but with override).
func (m *machine) rsDotenv(name string, override bool) error {
	_, err := m.rsDotenvResult(name, override)
	return err
}

func (m *machine) rsDotenvResult(name string, override bool) (any, error) {
	d, there, err := m.dotenvFile(name)
	if err != nil {
		return nil, err
	}
	if !there {
		return rsErr("Error", "path not found"), nil
	}
	for _, k := range d.keys {
		v, _ := d.get(k)
		t, ok := v.(string)
		if !ok {
			t = show(v)
		}
		if _, set := m.env.get(k); !set || override {
			m.env.put(k, t)
		}
	}
	return rsOk(name), nil
}

// rsStyled is a name in the style of rename_all (serde 1, "Container attributes").
func rsStyled(name, style string) string {
	var parts []string
	start := 0
	for i := 1; i <= len(name); i++ {
		if i == len(name) || name[i] >= 'A' && name[i] <= 'Z' && !(name[i-1] >= 'A' && name[i-1] <= 'Z') || name[i] == '_' {
			if w := strings.Trim(name[start:i], "_"); w != "" {
				parts = append(parts, strings.ToLower(w))
			}
			start = i
		}
	}
	title := func(w string) string { return strings.ToUpper(w[:1]) + w[1:] }
	switch style {
	case "lowercase":
		return strings.ToLower(name)
	case "UPPERCASE":
		return strings.ToUpper(name)
	case "kebab-case", "kebab_case":
		return strings.Join(parts, "-")
	case "snake_case":
		return strings.Join(parts, "_")
	case "SCREAMING_SNAKE_CASE":
		return strings.ToUpper(strings.Join(parts, "_"))
	case "SCREAMING-KEBAB-CASE":
		return strings.ToUpper(strings.Join(parts, "-"))
	case "camelCase", "PascalCase":
		out := ""
		for i, w := range parts {
			if i > 0 || style == "PascalCase" {
				w = title(w)
			}
			out += w
		}
		return out
	}
	return name
}

func rsRenameAll(attrs []*rust.Attr, path, key string) string {
	for _, a := range attrs {
		if a.Path == path {
			if x := a.Arg(key); x != nil && x.Value != nil {
				return x.Value.Text
			}
		}
	}
	return ""
}

// rsAttr finds what a field's attributes say under a name.
func rsAttr(attrs []*rust.Attr, paths []string, name string) *rust.AttrArg {
	for _, a := range attrs {
		if slices.Contains(paths, a.Path) {
			if x := a.Arg(name); x != nil {
				return x
			}
		}
	}
	return nil
}
