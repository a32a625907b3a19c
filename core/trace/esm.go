package trace

import (
	"path"

	"ubique/core/code"
)

// moduleKind tells how Node.js takes a file of JavaScript: "module", "commonjs", or
// empty where its syntax decides, or where it is not plainly Node.js that runs it
// (documentation of Node.js 24, "Determining module system").
func (m *machine) moduleKind(f *code.File) string {
	if m.e.By != "node" || f.Lang != code.JavaScript && f.Lang != code.JSX {
		return ""
	}
	switch path.Ext(f.Name) {
	case ".mjs":
		return "module"
	case ".cjs":
		return "commonjs"
	case ".js":
	default:
		return ""
	}
	for dir := path.Dir(f.Name); ; dir = path.Dir(dir) {
		if p := path.Join(dir, "package.json"); m.e.Loader.Data(p) != nil {
			kind, _ := m.e.Loader.Data(p).Get("type").Scalar()
			return kind
		}
		if dir == "." || dir == "/" || dir == "" {
			return ""
		}
	}
}

// otherModules is the error of a file that is written for the other of the two module
// systems; nil for all others.
func (m *machine) otherModules(f *code.File) error {
	if m.moduleKind(f) != "commonjs" || f.Body == nil {
		return nil
	}
	for _, k := range f.Body.Kids {
		if k.Is(code.Import) && k.Flag&code.Static == 0 {
			return certainly("SyntaxError", "Cannot use import statement outside a module")
		}
	}
	return nil
}
