package survey

import (
	"bytes"
	"path"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
)

// service are home folders that container images and servers make for the
// program itself.
var service = map[string]bool{"node": true, "app": true, "appuser": true, "runner": true, "site": true, "www-data": true, "nonroot": true, "deno": true, "bun": true, "container": true}

// desks are folders that people keep on their own machines.
var desks = []string{"Desktop", "Documents", "Downloads", "Pictures", "OneDrive", "Library", "projects", "Projects", "repos", "workspace", "dev", "code", "src", "git", "venv", ".venv", "env"}

// PersonalPath reports whether a text is a path of one person's machine: a
// home folder with something in it, or a drive of Windows. Routes of a web
// application such as /Users/list are none.
func PersonalPath(s string) bool {
	s = strings.TrimPrefix(s, "file://")
	if i := strings.Index(s, "////"); i > 0 { // a database address: sqlite:////home/…
		s = s[i+3:]
	}
	if len(s) > 3 && s[1] == ':' && (s[2] == '\\' || s[2] == '/' && strings.HasPrefix(s[3:], "Users/")) && (s[0] >= 'A' && s[0] <= 'Z' || s[0] >= 'a' && s[0] <= 'z') {
		return len(strings.Trim(s[3:], `\/`)) > 0
	}
	rest, home := strings.CutPrefix(s, "/home/")
	if !home {
		if rest, home = strings.CutPrefix(s, "/Users/"); !home {
			return false
		}
	}
	parts := strings.Split(rest, "/")
	if len(parts) < 2 || parts[0] == "" || parts[1] == "" || service[parts[0]] || strings.ContainsAny(rest, ":*{}<>$? ") {
		return false
	}
	if path.Ext(rest) != "" && !strings.HasSuffix(rest, ".") {
		return true
	}
	for _, p := range parts[1:] {
		for _, d := range desks {
			if p == d {
				return true
			}
		}
	}
	return false
}

var personalSigns = [][]byte{[]byte("/home/"), []byte("/Users/"), []byte(`:\`)}

// personal finds paths of one person's machine in the command of a start and
// in the texts of the code that it reaches. A folder that the container file
// makes is none.
func personal(st *fact.Start, prog *Program, files []*code.File) []fact.Path {
	var list []fact.Path
	made := func(p string) bool {
		if st.Descriptor == nil || st.Descriptor.Image == nil {
			return false
		}
		im := st.Descriptor.Image
		parts := strings.SplitN(p, "/", 4)
		home := strings.Join(parts[:min(3, len(parts))], "/")
		if strings.HasPrefix(im.WorkDir, home) {
			return true
		}
		for _, c := range im.Copies {
			if strings.HasPrefix(c.Dest, home) {
				return true
			}
		}
		for _, r := range im.Runs {
			if strings.Contains(r.Text, home) || len(parts) > 2 && strings.Contains(r.Text, "add") && strings.Contains(r.Text, parts[2]) {
				return true
			}
		}
		return false
	}
	for _, w := range st.Final.Args {
		if w.Literal() {
			_, v, _ := strings.Cut(w.Text, "=")
			if (PersonalPath(w.Text) || PersonalPath(v)) && !made(w.Text) {
				list = append(list, fact.Path{Text: w.Text, At: w.At})
			}
		}
	}
	for _, f := range files {
		found := false
		for _, sign := range personalSigns {
			found = found || bytes.Contains(f.Src, sign)
		}
		if !found {
			continue
		}
		if f.Skimmed {
			if f = prog.File(f.Name); f == nil {
				continue
			}
		}
		only := workOnly(f)
		f.Body.Walk(func(n *code.Node) bool {
			if only[n] {
				return false
			}
			if n.Is(code.String) && PersonalPath(n.Name) && !made(n.Name) {
				list = append(list, fact.Path{Text: n.Name, At: inside(f.At(n))})
			}
			return true
		})
	}
	return list
}
