package trace

import (
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/place"
	"ubique/core/rust"
)

// What programs of Rust do (The Rust Reference, 1.91, and the documentation of the
// standard library; read 2026-11): a value knows its type, what is parsed is of the type
// that stands where it goes, and what an async block does is done where it is awaited.

// rsState is what a program of Rust has beside its scopes.
type rsState struct {
	files   map[string]*rsModule // by the path of the file
	crates  map[string]*rsModule // by name; nil for those from outside
	defs    map[*rust.Item]*rsDef
	consts  map[*rust.Item]*rsCell
	busy    map[*rust.Item]bool // the constants that are being worked out
	traits  map[string][]*rsImpl
	sites   map[*code.File]map[int32]*code.Node
	looks   int  // how many names were looked for to find one
	threads int  // those that go on for good
	vague   bool // something from outside ran since the last listener
}

// rsModule is a module: a file, or one that stands in one.
type rsModule struct {
	name  string
	file  *code.File
	items map[string][]*rust.Item
	uses  []rust.Use
	all   []rust.Use // those of everything in a module
	up    *rsModule
	root  *rsModule
	kids  map[string]*rsModule
	dir   string // where the files of its modules are
	local []*rust.Item
}

// rsDef is a type of the tree.
type rsDef struct {
	name    string
	item    *rust.Item
	mod     *rsModule
	methods map[string][]*rsMethod
	traits  map[string]bool
	copies  bool
}

// rsMethod is a function of an impl, and what it stands in.
type rsMethod struct {
	fn    *rust.Fn
	impl  *rust.Item
	mod   *rsModule
	def   *rsDef
	trait string
	item  *rust.Item // a constant of the type
}

// rsImpl is an impl of a trait of the tree for a type from outside.
type rsImpl struct {
	of     string // the type's name; empty for every type
	method *rsMethod
}

func (m *machine) rs() *rsState {
	if m.rust == nil {
		m.rust = &rsState{files: map[string]*rsModule{}, crates: map[string]*rsModule{}, defs: map[*rust.Item]*rsDef{}, consts: map[*rust.Item]*rsCell{}, busy: map[*rust.Item]bool{}, traits: map[string][]*rsImpl{}, sites: map[*code.File]map[int32]*code.Node{}}
	}
	return m.rust
}

// runRust runs main of a file.
func (m *machine) runRust(file string) error {
	mod, err := m.rsCrate(file)
	if err != nil {
		return err
	}
	var main *rust.Item
	for _, it := range mod.items["main"] {
		if it.Kind == rust.FnItem {
			main = it
		}
	}
	if main == nil {
		return giveUp("there is no main")
	}
	v, err := m.rsFn(main.Fn, mod, nil, nil, nil, nil, nil, rsAt{mod.file, main.Off, main.End})
	if f, ok := v.(*rsFuture); ok && err == nil {
		v, err = m.rsWait(f)
	}
	if err != nil {
		return err
	}
	switch v := v.(type) {
	case *rsData:
		if v.variant == "Err" {
			return certainly("Error", "main gives "+rsDebug(v))
		}
	case *opaque:
		if v.path == "" {
			return undecided("%s", v.why)
		}
	}
	if m.rs().vague { // it may be what serves
		m.waiting, m.served = true, true
		return nil
	}
	return &exit{}
}

// rsCrate reads the first file of a program or of a library.
func (m *machine) rsCrate(file string) (*rsModule, error) {
	if mod := m.rs().files[file]; mod != nil {
		return mod, nil
	}
	mod := &rsModule{name: "crate", dir: path.Dir(file)}
	mod.root = mod
	return mod, m.rsRead(mod, file)
}

// rsRead reads the file of a module.
func (m *machine) rsRead(mod *rsModule, file string) error {
	f := m.e.Loader.File(file)
	if f == nil || f.Body == nil || f.Lang != code.Rust {
		return giveUp("%s could not be read", file)
	}
	m.rs().files[file] = mod
	mod.file = f
	if err := m.use(len(f.Src)); err != nil {
		return err
	}
	whole, _ := f.Whole(func(src []byte) any { return rust.Read(src) }).(*rust.File)
	if whole == nil {
		return giveUp("%s could not be read", file)
	}
	return m.rsFill(mod, whole.Items)
}

// rsFill takes the items of a module in.
func (m *machine) rsFill(mod *rsModule, items []*rust.Item) error {
	if m.depth++; m.depth > maxDepth {
		return spent("modules that hold each other")
	}
	defer func() { m.depth-- }()
	mod.items, mod.kids = map[string][]*rust.Item{}, map[string]*rsModule{}
	m.rsTake(mod, items)
	for _, it := range items {
		if it.Kind != rust.ModItem {
			continue
		}
		in := &rsModule{name: it.Name, up: mod, root: mod.root, file: mod.file, dir: path.Join(mod.dir, it.Name)}
		mod.kids[it.Name] = in
		if it.Inline {
			if err := m.rsFill(in, it.Items); err != nil {
				return err
			}
			continue
		}
		tries := []string{mod.dir + "/" + it.Name + ".rs", mod.dir + "/" + it.Name + "/mod.rs"}
		for _, a := range it.Attrs {
			if a.Path == "path" && a.Text != "" {
				tries = []string{path.Join(path.Dir(mod.file.Name), a.Text)}
			}
		}
		for _, t := range tries {
			if t = path.Clean(t); in.items == nil && m.e.Loader.File(t) != nil {
				if err := m.rsRead(in, t); err != nil {
					return err
				}
			}
		}
	}
	// What is done for types is known once all types of the module are.
	for _, it := range items {
		if it.Kind == rust.ImplItem {
			m.rsTakeImpl(it, mod)
		}
	}
	return nil
}

func (m *machine) rsTake(mod *rsModule, items []*rust.Item) {
	for _, it := range items {
		switch it.Kind {
		case rust.UseItem:
			for _, u := range it.Uses {
				if u.All {
					mod.all = append(mod.all, u)
				} else {
					mod.uses = append(mod.uses, u)
				}
			}
		case rust.MacroItem:
			if len(it.Items) > 0 {
				m.rsTake(mod, it.Items)
			}
			mod.items[it.Name] = append(mod.items[it.Name], it)
		case rust.ImplItem, rust.ModItem:
		default:
			mod.items[it.Name] = append(mod.items[it.Name], it)
		}
	}
}

// rsTakeImpl takes in what a type can do.
func (m *machine) rsTakeImpl(it *rust.Item, mod *rsModule) {
	trait := it.Trait.Last()
	of := m.rsType(it.Type, &rsFrame{mod: mod})
	var def *rsDef
	if of != nil {
		def = of.def
	}
	put := func(name string, meth *rsMethod) {
		if def != nil {
			def.methods[name] = append(def.methods[name], meth)
			return
		}
		target := ""
		if of != nil {
			target = of.name
		}
		m.rs().traits[name] = append(m.rs().traits[name], &rsImpl{target, meth})
	}
	for _, in := range it.Items {
		meth := &rsMethod{fn: in.Fn, impl: it, mod: mod, def: def, trait: trait}
		if in.Kind == rust.ConstItem {
			meth.item = in
		} else if in.Kind != rust.FnItem {
			continue
		}
		put(in.Name, meth)
	}
	if trait == "" {
		return
	}
	if def != nil {
		def.traits[trait] = true
		if trait == "Copy" {
			def.copies = true
		}
	}
	if e := m.rsFind(it.Trait.Path, mod, nil); e.item != nil && e.item.Kind == rust.TraitItem { // what the trait does by itself
		for _, in := range e.item.Items {
			if in.Kind == rust.FnItem && in.Fn.Body == nil || in.Kind == rust.ConstItem && in.Value == nil {
				continue
			}
			if !slices.ContainsFunc(it.Items, func(x *rust.Item) bool { return x.Name == in.Name }) {
				meth := &rsMethod{fn: in.Fn, impl: it, mod: e.mod, def: def, trait: trait}
				if in.Kind == rust.ConstItem {
					meth.item = in
				}
				put(in.Name, meth)
			}
		}
	}
}

// rsDefOf is the type that an item declares.
func (m *machine) rsDefOf(it *rust.Item, mod *rsModule) *rsDef {
	d := m.rs().defs[it]
	if d == nil {
		d = &rsDef{name: it.Name, item: it, mod: mod, methods: map[string][]*rsMethod{}, traits: map[string]bool{}}
		m.rs().defs[it] = d
		for _, a := range it.Attrs {
			if a.Path == "derive" {
				for _, x := range a.Args {
					name := x.Name[strings.LastIndexByte(x.Name, ':')+1:]
					d.traits[name] = true
					d.copies = d.copies || name == "Copy"
				}
			}
		}
	}
	return d
}

// rsEntity is what a path leads to.
type rsEntity struct {
	item    *rust.Item
	mod     *rsModule // where it stands, or the module itself
	variant *rust.Variant
	def     *rsDef
	rest    []string // what of the path is left: of a type, a function or a constant
	path    string   // of what is outside
	t       *rsT     // a type that something is made for
}

// rsFind says what a path leads to.
func (m *machine) rsFind(p []string, mod *rsModule, fr *rsFrame) rsEntity {
	m.rs().looks = 0
	return m.rsFindIn(p, mod, fr, 0)
}

func (m *machine) rsFindIn(p []string, mod *rsModule, fr *rsFrame, depth int) rsEntity {
	out := rsEntity{path: strings.Join(p, ".")}
	if m.rs().looks++; len(p) == 0 || depth > 40 || mod == nil || m.rs().looks > 500 {
		return out
	}
	head, rest := p[0], p[1:]
	switch head {
	case "crate", "$crate":
		return m.rsDown(mod.root, rest, fr, depth)
	case "self":
		if len(rest) > 0 {
			return m.rsDown(mod, rest, fr, depth)
		}
		return out
	case "super":
		if mod.up != nil {
			return m.rsDown(mod.up, rest, fr, depth)
		}
		return out
	case "Self":
		if fr != nil && fr.self != nil {
			return m.rsMember(fr.self, rest)
		}
	}
	if fr != nil {
		if t := fr.types[head]; t != nil {
			if t.def != nil {
				return m.rsMember(t.def, rest)
			}
			return rsEntity{t: t, rest: rest, path: strings.Join(append([]string{t.name}, rest...), ".")}
		}
		for _, l := range fr.locals {
			for _, it := range l {
				if it.Name == head && it.Kind != rust.UseItem {
					return m.rsOf(it, mod, rest)
				}
				for _, u := range it.Uses {
					switch {
					case !u.All && u.As == head:
						return m.rsFindIn(append(slices.Clone(u.Path), rest...), mod, nil, depth+1)
					case u.All:
						if e := m.rsFindIn(append(slices.Clone(u.Path), p...), mod, nil, depth+1); e.path == "" {
							return e
						}
					}
				}
			}
		}
	}
	if e := m.rsHere(mod, head, rest, fr, depth); e.path == "" || e.t != nil {
		return e
	}
	for _, u := range mod.uses {
		if u.As == head && !(len(u.Path) == 1 && u.Path[0] == head) {
			return m.rsFindIn(append(slices.Clone(u.Path), rest...), mod, nil, depth+1)
		}
	}
	if c := m.rsOther(head, mod); c != nil {
		return m.rsDown(c, rest, fr, depth)
	}
	for _, u := range mod.all {
		if len(u.Path) > 0 && u.Path[0] != "std" {
			if e := m.rsFindIn(append(slices.Clone(u.Path), p...), mod, nil, depth+1); e.path == "" {
				return e
			}
		}
	}
	return out
}

// rsHere looks for a name in a module itself.
func (m *machine) rsHere(mod *rsModule, head string, rest []string, fr *rsFrame, depth int) rsEntity {
	if k := mod.kids[head]; k != nil {
		if e := m.rsDown(k, rest, fr, depth); e.path == "" || len(mod.items[head]) == 0 {
			return e
		}
	}
	var best *rust.Item
	for _, it := range mod.items[head] {
		if best == nil || (len(rest) > 0) == (it.Kind == rust.StructItem || it.Kind == rust.EnumItem || it.Kind == rust.TraitItem || it.Kind == rust.TypeItem) {
			best = it
		}
	}
	if best == nil {
		return rsEntity{path: head}
	}
	return m.rsOf(best, mod, rest)
}

// rsOf is what an item is, and what of it is asked for.
func (m *machine) rsOf(it *rust.Item, mod *rsModule, rest []string) rsEntity {
	switch it.Kind {
	case rust.StructItem, rust.EnumItem:
		return m.rsMember(m.rsDefOf(it, mod), rest)
	case rust.TypeItem:
		if t := m.rsType(it.Type, &rsFrame{mod: mod}); t != nil {
			if t.def != nil {
				return m.rsMember(t.def, rest)
			}
			return rsEntity{t: t, rest: rest, path: strings.Join(append([]string{t.name}, rest...), ".")}
		}
	}
	return rsEntity{item: it, mod: mod, rest: rest}
}

func (m *machine) rsMember(d *rsDef, rest []string) rsEntity {
	e := rsEntity{def: d, item: d.item, mod: d.mod, rest: rest}
	if len(rest) > 0 && d.item.Kind == rust.EnumItem {
		for i := range d.item.Variants {
			if d.item.Variants[i].Name == rest[0] {
				e.variant, e.rest = &d.item.Variants[i], rest[1:]
			}
		}
	}
	return e
}

// rsDown goes on in a module.
func (m *machine) rsDown(mod *rsModule, rest []string, fr *rsFrame, depth int) rsEntity {
	if len(rest) == 0 {
		return rsEntity{mod: mod}
	}
	switch rest[0] {
	case "super", "self":
		return m.rsFindIn(rest, mod, nil, depth+1)
	}
	if e := m.rsHere(mod, rest[0], rest[1:], nil, depth+1); e.path == "" || e.t != nil {
		return e
	}
	for _, u := range mod.uses { // what it gives on
		if u.As == rest[0] {
			return m.rsFindIn(append(slices.Clone(u.Path), rest[1:]...), mod, nil, depth+1)
		}
	}
	for _, u := range mod.all {
		if e := m.rsFindIn(append(slices.Clone(u.Path), rest...), mod, nil, depth+1); e.path == "" {
			return e
		}
	}
	return rsEntity{path: strings.Join(rest, ".")}
}

// rsOther is a library of the tree by its name: that of the program's own folder, or one
// that Cargo.toml names by its path (The Cargo Book, "Specifying Dependencies"). Nil for
// one from outside.
func (m *machine) rsOther(name string, mod *rsModule) *rsModule {
	key := mod.root.file.Name + "\x00" + name
	if c, ok := m.rs().crates[key]; ok {
		return c
	}
	m.rs().crates[key] = nil
	dir := path.Dir(mod.root.file.Name)
	for range 3 {
		d := m.e.Loader.Data(path.Join(dir, "Cargo.toml"))
		if d == nil {
			if dir == "." || dir == "/" {
				break
			}
			dir = path.Dir(dir)
			continue
		}
		own := d.Get("lib", "name").Str()
		if own == "" {
			own = strings.ReplaceAll(d.Get("package", "name").Str(), "-", "_")
		}
		folder, at := "", d.Get("lib", "path").Str()
		if own == name {
			folder = dir
		} else if deps := d.Get("dependencies"); deps != nil {
			at = ""
			for _, k := range deps.Kids {
				if strings.ReplaceAll(k.Key, "-", "_") == name {
					if p := k.Get("path").Str(); p != "" {
						folder = path.Join(dir, p)
					} else if b, ok := k.Get("workspace").Scalar(); ok && b == "true" {
						for up := path.Dir(dir); folder == ""; up = path.Dir(up) {
							if w := m.e.Loader.Data(path.Join(up, "Cargo.toml")).Get("workspace", "dependencies"); w != nil {
								for _, x := range w.Kids {
									if x.Key == k.Key && x.Get("path").Str() != "" {
										folder = path.Join(up, x.Get("path").Str())
									}
								}
								break
							}
							if up == "." || up == "/" {
								break
							}
						}
					}
				}
			}
		}
		if folder != "" {
			if at == "" {
				at = "src/lib.rs"
			}
			if c, err := m.rsCrate(path.Join(folder, at)); err == nil && c.file != mod.root.file {
				m.rs().crates[key] = c
			}
		}
		break
	}
	return m.rs().crates[key]
}

// rsAt is a stretch of a file.
type rsAt struct {
	f        *code.File
	off, end int32
}

// spot is the call of package code that ends at the same place, or one made up.
func (m *machine) rsSpot(at rsAt) spot {
	sites := m.rs().sites[at.f]
	if sites == nil {
		sites = map[int32]*code.Node{}
		for _, c := range at.f.Calls {
			if old := sites[c.Node.End]; old == nil || c.Node.Off < old.Off {
				sites[c.Node.End] = c.Node
			}
		}
		m.rs().sites[at.f] = sites
	}
	if n := sites[at.end]; n != nil {
		return spot{at.f, n}
	}
	return spot{at.f, &code.Node{Kind: code.Call, Off: at.off, End: at.end}}
}

func (at rsAt) span() place.Span {
	return at.f.At(&code.Node{Kind: code.Name, Off: at.off, End: at.end})
}

// rsStays are calls of what is outside that do not come back while a program serves, by
// the last name; what they are called on or with must have to do with a listener, or be
// such by its path (documentation of Tokio 1, Axum 0.8, Actix Web 4, hyper 1, warp 0.3,
// Rocket 0.5, tiny_http 0.12, rouille 3.6, tide 0.16, poem 3, salvo 0.8, tonic 0.14; read
// 2026-11).
var rsStays = map[string]bool{"serve": true, "run": true, "launch": true, "listen": true, "accept": true, "incoming": true, "incoming_requests": true, "recv": true, "start_server": true, "serve_connection": true, "start": true, "serve_with_shutdown": true, "serve_with_incoming": true, "with_graceful_shutdown": true, "bind": true, "poll_accept": true, "next": true, "for_each": true, "try_for_each": true, "serve_forever": true}

// rsPending are futures that nothing ends on a host (Tokio 1, "signal"; std::future).
var rsPending = map[string]bool{"ctrl_c": true, "pending": true, "terminate": true, "closed": true, "notified": true, "cancelled": true}

// rsServing reports whether what is outside serves: in the chain of calls that made it
// stands one that stays.
func rsServing(o *opaque) bool {
	for n := 0; o != nil && n < 60; n++ {
		p := strings.TrimSuffix(o.path, "()")
		if rsStays[p[strings.LastIndexByte(p, '.')+1:]] {
			return true
		}
		o = o.recv
	}
	return false
}
