// Package place says where something stands: file, line, column and span.
//
// Lines and columns are 1-based; columns count characters (Unicode code
// points), not bytes. Offsets are byte offsets from the start of the file.
// The package knows no file system: it is given the bytes.
package place

import (
	"fmt"
	"sort"
	"unicode/utf8"
)

// Span is a stretch of one file. The zero Line means that only the file (or
// folder) as a whole is meant.
type Span struct {
	File    string `json:"file"`
	Line    int    `json:"line"`
	Col     int    `json:"column"`
	EndLine int    `json:"end_line"`
	EndCol  int    `json:"end_column"` // the first column after the span
}

// String gives file:line:column, the form that editors and terminals follow.
func (s Span) String() string {
	if s.Line == 0 {
		return s.File
	}
	return fmt.Sprintf("%s:%d:%d", s.File, s.Line, s.Col)
}

// IsZero reports whether the span names no file at all.
func (s Span) IsZero() bool { return s.File == "" }

// Before orders spans by file, line and column.
func (s Span) Before(t Span) bool {
	if s.File != t.File {
		return s.File < t.File
	}
	if s.Line != t.Line {
		return s.Line < t.Line
	}
	return s.Col < t.Col
}

// Whole is the span that means a file or a folder as a whole.
func Whole(file string) Span { return Span{File: file} }

// Lines turns byte offsets of one file into lines and columns. It is made
// once a file and is safe for concurrent use after that.
type Lines struct {
	src    []byte
	starts []int
}

// NewLines indexes the line starts of src. LF, CRLF and a lone CR end a line.
func NewLines(src []byte) *Lines {
	starts := make([]int, 1, 1+len(src)/32)
	for i, c := range src {
		if c == '\n' || c == '\r' && (i+1 >= len(src) || src[i+1] != '\n') {
			starts = append(starts, i+1)
		}
	}
	return &Lines{src: src, starts: starts}
}

// Position gives the line and column of a byte offset. An offset outside the
// file is taken to the nearest end.
func (l *Lines) Position(off int) (line, col int) {
	off = max(0, min(off, len(l.src)))
	i := sort.SearchInts(l.starts, off+1) - 1
	return i + 1, utf8.RuneCount(l.src[l.starts[i]:off]) + 1
}

// Span gives the span between two byte offsets of the file.
func (l *Lines) Span(file string, off, end int) Span {
	line, col := l.Position(off)
	endLine, endCol := l.Position(max(off, end))
	return Span{file, line, col, endLine, endCol}
}

// Offset is the byte offset of a line and a column given in characters.
func (l *Lines) Offset(line, col int) int {
	if line < 1 {
		return 0
	}
	if line > len(l.starts) {
		return len(l.src)
	}
	off := l.starts[line-1]
	for ; col > 1 && off < len(l.src); col-- {
		_, n := utf8.DecodeRune(l.src[off:])
		off += n
	}
	return off
}

// Count is the number of lines.
func (l *Lines) Count() int { return len(l.starts) }

// Text is the text of a line without its line end; empty outside the file.
func (l *Lines) Text(line int) string {
	if line < 1 || line > len(l.starts) {
		return ""
	}
	end := len(l.src)
	if line < len(l.starts) {
		end = l.starts[line]
	}
	text := l.src[l.starts[line-1]:end]
	for len(text) > 0 && (text[len(text)-1] == '\n' || text[len(text)-1] == '\r') {
		text = text[:len(text)-1]
	}
	return string(text)
}
