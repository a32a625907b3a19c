// Package place says where something stands: file, line, column and span.
//
// Lines and columns are 1-based; columns count characters (Unicode code
// points), not bytes. Offsets are byte offsets from the start of the file.
// The package knows no file system: it is given the bytes.
package place

import (
	"fmt"
	"sort"
	"sync"
	"unicode/utf8"
)

// Root is where the tree lies while programs are gone through.
const Root = "/tree"

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
// once a file, indexes as far as it is asked for, and is safe for concurrent
// use.
type Lines struct {
	src    []byte
	mu     sync.Mutex
	starts []int
	seen   int // how far the line starts are known
}

// NewLines indexes the line starts of src. LF, CRLF and a lone CR end a line.
func NewLines(src []byte) *Lines { return &Lines{src: src, starts: make([]int, 1, 8)} }

// upTo gives the line starts, complete at least up to an offset.
func (l *Lines) upTo(off int) []int {
	l.mu.Lock()
	defer l.mu.Unlock()
	if off <= l.seen && l.seen > 0 {
		return l.starts
	}
	// Somewhat further, so that the next question finds it known.
	end := min(len(l.src), off+1024)
	if end > len(l.src)/2 {
		end = len(l.src)
	}
	for i := l.seen; i < end; i++ {
		if c := l.src[i]; c == '\n' || c == '\r' && (i+1 >= len(l.src) || l.src[i+1] != '\n') {
			l.starts = append(l.starts, i+1)
		}
	}
	l.seen = max(l.seen, end)
	return l.starts
}

// Position gives the line and column of a byte offset. An offset outside the
// file is taken to the nearest end.
func (l *Lines) Position(off int) (line, col int) {
	off = max(0, min(off, len(l.src)))
	starts := l.upTo(off)
	i := sort.SearchInts(starts, off+1) - 1
	return i + 1, utf8.RuneCount(l.src[starts[i]:off]) + 1
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
	starts := l.upTo(len(l.src))
	if line > len(starts) {
		return len(l.src)
	}
	off := starts[line-1]
	for ; col > 1 && off < len(l.src); col-- {
		_, n := utf8.DecodeRune(l.src[off:])
		off += n
	}
	return off
}

// Count is the number of lines.
func (l *Lines) Count() int { return len(l.upTo(len(l.src))) }

// Text is the text of a line without its line end; empty outside the file.
func (l *Lines) Text(line int) string {
	starts := l.upTo(len(l.src))
	if line < 1 || line > len(starts) {
		return ""
	}
	end := len(l.src)
	if line < len(starts) {
		end = starts[line]
	}
	text := l.src[starts[line-1]:end]
	for len(text) > 0 && (text[len(text)-1] == '\n' || text[len(text)-1] == '\r') {
		text = text[:len(text)-1]
	}
	return string(text)
}
