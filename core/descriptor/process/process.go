// Package process reads the process file: one process a line, its name, a
// colon and its command. The format is read by several independent programs
// that run processes (foreman, honcho, goreman, overmind).
package process

import (
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
)

// FileName is the exact name of a process file.
const FileName = "Procfile"

// Read reads a process file. A line that is no process makes it unreadable at
// that line.
func Read(name string, f *source.File) *fact.Descriptor {
	d := &fact.Descriptor{File: name, Format: "process file", How: "read"}
	lines := f.Lines()
	for n := 1; n <= lines.Count(); n++ {
		text := lines.Text(n)
		trimmed := strings.TrimSpace(text)
		if trimmed == "" || trimmed[0] == '#' {
			continue
		}
		indent := len([]rune(text)) - len([]rune(strings.TrimLeft(text, " \t")))
		key, command, ok := strings.Cut(trimmed, ":")
		if !ok || key == "" || strings.ContainsAny(key, " \t=/$\"'") {
			if d.Err == nil {
				at := place.Span{File: name, Line: n, Col: indent + 1, EndLine: n, EndCol: len([]rune(strings.TrimRight(text, " \t"))) + 1}
				d.Err = &document.Error{At: at, Expected: "a process is wanted here: NAME: COMMAND"}
			}
			continue
		}
		rest := strings.TrimLeft(command, " \t")
		col := indent + len([]rune(key)) + 2 + len([]rune(command)) - len([]rune(rest))
		d.Procs = append(d.Procs, fact.Proc{
			Name: key, Command: rest,
			NameAt: place.Span{File: name, Line: n, Col: indent + 1, EndLine: n, EndCol: indent + 1 + len([]rune(key))},
			At:     place.Span{File: name, Line: n, Col: col, EndLine: n, EndCol: col + len([]rune(rest))},
		})
	}
	return d
}
