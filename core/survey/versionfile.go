package survey

import (
	"strings"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/source"
)

// VersionFile is a file that pins a runtime: a bare version, or lines of a
// tool and its version where Tools is set.
type VersionFile struct {
	Name   string
	Tools  []string
	Prefix string // text that stands before the version
}

// VersionFiles reads version files of a folder and, where it has none, of the
// folders above it, as the tools that read them do.
func VersionFiles(t *source.Tree, dir string, files []VersionFile, found func(name, text string, at place.Span)) {
	for _, vf := range files {
		for d := dir; ; d = source.Dir(d) {
			name := vf.Name
			if d != "" {
				name = d + "/" + vf.Name
			}
			if t.Has(name) {
				if f, err := t.Code(name); err == nil {
					readVersionFile(vf, name, f, found)
				}
				break
			}
			if d == "" {
				break
			}
		}
	}
}

func readVersionFile(vf VersionFile, name string, f *source.File, found func(name, text string, at place.Span)) {
	for _, line := range document.PlainLines(name, f.Data, f.Lines()) {
		if vf.Tools == nil {
			if vf.Prefix != "" && !strings.HasPrefix(line.Text, vf.Prefix) {
				continue
			}
			at := line.At
			text := strings.TrimPrefix(line.Text, vf.Prefix)
			at.Col += len(line.Text) - len(text)
			found(name, text, at)
			return
		}
		fields := strings.Fields(line.Text)
		for _, tool := range vf.Tools {
			if len(fields) > 1 && fields[0] == tool {
				at := line.At
				i := strings.LastIndex(line.Text, fields[1])
				at.Col += i
				at.EndCol = at.Col + len(fields[1])
				found(name, fields[1], at)
			}
		}
	}
}
