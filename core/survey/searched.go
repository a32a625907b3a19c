package survey

import (
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/source"
)

// searchPaths are the variables with folders in which modules are looked for (Node.js 24,
// "Loading from the global folders"; Python 3.14, "Command line and environment").
var searchPaths = []string{"NODE_PATH", "PYTHONPATH"}

// searched lists the folders of the tree in which a program looks for modules besides its
// own: those of a variable that the command sets, and those that its first file puts into
// sys.path.
func searched(st *fact.Start, prog *Program) (dirs []string) {
	for _, name := range searchPaths {
		for d := range strings.SplitSeq(st.Env[name], ":") {
			if p, ok := source.Join(st.Final.Dir, d); ok && d != "" && !path.IsAbs(d) {
				dirs = append(dirs, p)
			}
		}
	}
	if st.Target == nil || st.Target.File == "" || !strings.HasSuffix(st.Target.File, ".py") && st.Program.Main == "" {
		return dirs
	}
	f := prog.File(st.Target.File)
	if f == nil || f.Lang != code.Python {
		return dirs
	}
	for _, site := range f.Calls {
		args := site.Node.Args()
		if d := site.Node.Kid(0).Dotted(); d != "sys.path.insert" && d != "sys.path.append" && d != "site.addsitedir" || len(args) == 0 {
			continue
		}
		if p, ok := st.Program.PathOf(st.Program.Expr(args[len(args)-1], site.Scope)); ok {
			dirs = append(dirs, p)
		}
	}
	return dirs
}
