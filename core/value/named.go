package value

import (
	"path"
	"slices"
	"strings"

	"ubique/core/document"
	"ubique/core/place"
)

// Files of settings that a value names: one of several, where conditions or the
// environment choose the name.

// dataEnds are the endings of files of settings.
var dataEnds = []string{".json", ".yaml", ".yml", ".toml", ".ini", ".cfg", ".conf", ".properties"}

// maxNamed is how many files are looked at that a variable may name.
const maxNamed = 24

// named is what `read` makes of the file of data that a value names, seen from
// the folder in which the program runs; where conditions choose between names,
// one for each. Nil where nothing is known of the name, or where there is no
// such file.
func (e *Eval) named(name *Value, at place.Span, read func(*document.Node) *Value) *Value {
	return e.namedIn(e.Dir, nil, name, at, read, 0)
}

// fromNamed is named with what the file holds.
func (e *Eval) fromNamed(name *Value, at place.Span) *Value {
	return e.named(name, at, func(d *document.Node) *Value {
		return FromDocument(d).with(Step{at, "reads " + d.At().File})
	})
}

func (e *Eval) namedIn(dir string, dirs []string, name *Value, at place.Span, read func(*document.Node) *Value, depth int) *Value {
	if name == nil || depth > 8 {
		return nil
	}
	file := func(p string) *Value {
		if d := e.Loader.Data(p); d != nil {
			return read(d)
		}
		return nil
	}
	if name.Kind == Str {
		if path.IsAbs(name.Text) {
			return nil
		}
		return file(path.Join(dir, name.Text))
	}
	if p, ok := e.PathOf(name); ok && (name.Kind == External || dir == e.Dir) {
		return file(p)
	}
	in := func(name *Value) *Value { return e.namedIn(dir, dirs, name, at, read, depth+1) }
	either := func(test, a, b *Value) *Value {
		if a == nil && b == nil {
			return nil
		}
		for _, x := range []**Value{&a, &b} {
			if *x == nil {
				*x = unknown("what is in a file that is named while the program runs", at)
			}
		}
		return &Value{Kind: Cond, Py: name.Py, At: at, Kids: []*Value{test, a, b}}
	}
	switch name.Kind {
	case Cond:
		if len(name.Kids) == 3 {
			return either(name.Kids[0], in(name.Kids[1]), in(name.Kids[2]))
		}
	case Env:
		return e.namedBy(name, dir, dirs, at, read)
	case Op:
		switch {
		case len(name.Kids) == 1 && (name.Text == "astext" || name.Text == "String" || name.Text == "strip"):
			return in(name.Kids[0])
		case len(name.Kids) == 2 && (name.Text == "||" || name.Text == "??" || name.Text == "unset"):
			if p := name.Kids[1]; p.Kind == Str {
				dirs = append(dirs[:len(dirs):len(dirs)], path.Dir(p.Text))
			}
			set := name.Kids[0]
			test := map[string]*Value{"||": op("Boolean", name.Py, at, set), "??": op("!", false, at, op("nothing", false, at, set)), "unset": op("isset", false, at, set)}[name.Text]
			return either(test, in(set), in(name.Kids[1]))
		}
	case External:
		switch name.Text {
		case "os.path.abspath()", "os.path.realpath()", "os.path.normpath()", "pathlib.Path()", "path.normalize()", "realpath()", "File.new()":
			if len(name.Kids) == 1 {
				return in(name.Kids[0])
			}
		case "File.expand_path()":
			if len(name.Kids) == 1 {
				return in(name.Kids[0])
			}
			if len(name.Kids) == 2 {
				if p, ok := e.PathOf(name.Kids[1]); ok {
					return e.namedIn(p, nil, name.Kids[0], at, read, depth+1)
				}
			}
		}
		if joins[name.Text] || strings.HasSuffix(name.Text, "/") && len(name.Kids) == 2 {
			if len(name.Kids) == 1 {
				return in(name.Kids[0])
			}
			front := *name
			front.Kids = name.Kids[:max(0, len(name.Kids)-1)]
			last := name.Kids[len(name.Kids)-1]
			if len(front.Kids) == 1 {
				front = *front.Kids[0]
			}
			if p, ok := e.PathOf(&front); ok && last.Kind != Str && !(last.Kind == Op && last.Text == "concat") {
				return e.namedIn(p, nil, last, at, read, depth+1)
			}
		}
	}
	t, ok := e.templateOf(name, dir)
	if !ok {
		return nil
	}
	keys, files := t.choices(e.Loader)
	var values []*Value
	for _, f := range files {
		v := file(f)
		if v == nil {
			return nil
		}
		values = append(values, v)
	}
	if len(keys) == 0 {
		return nil
	}
	return t.oneOf(keys, values, at)
}

// joins are the calls that put the parts of a path together.
var joins = map[string]bool{"path.join()": true, "path.resolve()": true, "path.posix.join()": true, "os.path.join()": true, "File.join()": true, "path/filepath.Join()": true, "filepath.Join()": true, "Path.of()": true, "Paths.get()": true}

// namedBy is the file of data that a variable names: any of those that lie
// where the program runs, or in one of the folders beside it.
func (e *Eval) namedBy(set *Value, dir string, dirs []string, at place.Span, read func(*document.Node) *Value) *Value {
	v := unknown("a file that the environment names", at)
	known := false
	seen := map[string]bool{}
	for _, sub := range append([]string{"."}, dirs...) {
		for _, f := range e.Loader.Beside(strings.TrimPrefix(path.Join(dir, sub), "./")) {
			if seen[f] || len(seen) >= maxNamed || !slices.Contains(dataEnds, path.Ext(f)) {
				continue
			}
			seen[f] = true
			d := e.Loader.Data(f)
			if d == nil {
				continue
			}
			w := read(d)
			if w == nil {
				continue
			}
			key := strings.TrimPrefix(strings.TrimPrefix(f, dir), "/")
			test := op("||", false, at, op("===", false, at, set, text(key, at)), op("===", false, at, set, text("./"+key, at)))
			v = &Value{Kind: Cond, At: at, Kids: []*Value{test, w, v}}
			known = true
		}
	}
	if !known {
		return nil
	}
	return v
}
