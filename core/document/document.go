// Package document reads JSON (with comments where the format allows them),
// YAML, TOML, INI, properties and dotenv files into one tree of nodes that
// know their key, value and place. It gives structure, not meaning.
//
// A document that cannot be read gives an *Error with line, column and what
// was expected; the readers never panic.
package document

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"ubique/core/place"
)

// Kind is the kind of a node.
type Kind uint8

// The kinds of nodes.
const (
	Null Kind = iota
	Map
	List
	String
	Number
	Bool
)

// Node is one value of a document. Maps keep the order of their keys.
type Node struct {
	Kind Kind
	Key  string  // the key, for a value in a map
	Text string  // the scalar as text: a string's value, else as written
	Kids []*Node // values of a map or a list

	doc            *source
	off, end       int32 // bytes of the value
	keyOff, keyEnd int32 // bytes of the key
}

type source struct {
	name  string
	lines *place.Lines
}

// Error says where a document cannot be read and what was expected there.
type Error struct {
	At       place.Span
	Expected string
}

func (e *Error) Error() string { return fmt.Sprintf("%s: %s", e.At, e.Expected) }

// At is the place of the value.
func (n *Node) At() place.Span {
	if n == nil || n.doc == nil {
		return place.Span{}
	}
	return n.doc.lines.Span(n.doc.name, int(n.off), int(n.end))
}

// KeyAt is the place of the key, or of the value where there is no key.
func (n *Node) KeyAt() place.Span {
	if n == nil || n.doc == nil {
		return place.Span{}
	}
	if n.keyEnd == 0 {
		return n.At()
	}
	return n.doc.lines.Span(n.doc.name, int(n.keyOff), int(n.keyEnd))
}

// Get follows keys down the maps; nil when one is not there. Keys that stand
// twice give the last, as readers of JSON do.
func (n *Node) Get(keys ...string) *Node {
	for _, k := range keys {
		if n == nil || n.Kind != Map {
			return nil
		}
		var next *Node
		for _, c := range n.Kids {
			if c.Key == k {
				next = c
			}
		}
		n = next
	}
	return n
}

// Str is the text of a string; empty for anything else.
func (n *Node) Str() string {
	if n == nil || n.Kind != String {
		return ""
	}
	return n.Text
}

// Scalar is the text of a string, number or boolean.
func (n *Node) Scalar() (string, bool) {
	if n == nil || n.Kind == Map || n.Kind == List || n.Kind == Null {
		return "", false
	}
	return n.Text, true
}

// Int is the value of a whole number, also of one written as a string.
func (n *Node) Int() (int, bool) {
	if n == nil || n.Kind != Number && n.Kind != String {
		return 0, false
	}
	v, err := strconv.Atoi(strings.ReplaceAll(n.Text, "_", ""))
	if err != nil && n.Kind == Number {
		if f, ferr := strconv.ParseFloat(n.Text, 64); ferr == nil && f == math.Trunc(f) && math.Abs(f) < 1e15 {
			return int(f), true
		}
	}
	return v, err == nil
}

// Items are the values of a map or a list; safe on nil.
func (n *Node) Items() []*Node {
	if n == nil {
		return nil
	}
	return n.Kids
}

// Walk calls visit for the node and everything below it, in order, with the
// keys that lead to it.
func (n *Node) Walk(visit func(path []string, n *Node)) { n.walk(nil, visit) }

func (n *Node) walk(path []string, visit func([]string, *Node)) {
	if n == nil {
		return
	}
	visit(path, n)
	for i, c := range n.Kids {
		k := c.Key
		if n.Kind == List {
			k = strconv.Itoa(i)
		}
		c.walk(append(path[:len(path):len(path)], k), visit)
	}
}

func newSource(name string, lines *place.Lines) *source { return &source{name, lines} }

func (s *source) node(kind Kind, text string, off, end int) *Node {
	return &Node{Kind: kind, Text: text, doc: s, off: int32(off), end: int32(end)}
}

func (s *source) fail(off int, format string, args ...any) *Error {
	return &Error{s.lines.Span(s.name, off, off+1), fmt.Sprintf(format, args...)}
}
