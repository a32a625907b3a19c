package document

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"

	"ubique/core/place"
)

// XML reads an XML document (XML 1.0) into a map that holds the root element
// by its name. An element without elements in it is a string; attributes are
// keys that begin with @; the text of an element that has both stands under
// #text. Names are without their prefixes. Elements of one name stand beside
// each other.
func XML(name string, data []byte, lines *place.Lines) (*Node, error) {
	src := newSource(name, lines)
	root := src.node(Map, "", 0, len(data))
	d := xml.NewDecoder(bytes.NewReader(data))
	d.Strict = true
	d.CharsetReader = func(_ string, r io.Reader) (io.Reader, error) { return r, nil } // names and versions are ASCII
	stack := []*Node{root}
	texts := [][]byte{nil}
	var starts []int
	for {
		before := int(d.InputOffset())
		t, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			var se *xml.SyntaxError
			text := err.Error()
			if errors.As(err, &se) {
				text = se.Msg
			}
			return nil, src.fail(min(int(d.InputOffset()), max(0, len(data)-1)), "not valid XML: %s", text)
		}
		after := int(d.InputOffset())
		switch t := t.(type) {
		case xml.StartElement:
			if len(stack) > maxNesting {
				return nil, src.fail(before, "nested deeper than %d levels: not read", maxNesting)
			}
			n := src.node(Map, "", after, after)
			n.Key = t.Name.Local
			n.keyOff, n.keyEnd = int32(before+1), int32(before+1+len(t.Name.Local))
			tag := string(data[before:min(after, len(data))])
			for _, a := range t.Attr {
				off := before
				if i := strings.Index(tag, a.Name.Local+"="); i >= 0 {
					off = before + i
				}
				k := src.node(String, a.Value, off+len(a.Name.Local)+2, off+len(a.Name.Local)+2+len(a.Value))
				k.Key, k.keyOff, k.keyEnd = "@"+a.Name.Local, int32(off), int32(off+len(a.Name.Local))
				n.Kids = append(n.Kids, k)
			}
			parent := stack[len(stack)-1]
			parent.Kids = append(parent.Kids, n)
			stack = append(stack, n)
			texts = append(texts, nil)
			starts = append(starts, after)
		case xml.EndElement:
			n := stack[len(stack)-1]
			text := strings.TrimSpace(string(texts[len(texts)-1]))
			off := starts[len(starts)-1]
			if i := bytes.Index(data[off:min(before, len(data))], []byte(text)); i >= 0 && text != "" {
				off += i
			}
			if len(n.Kids) == 0 {
				n.Kind, n.Text = String, text
				n.off, n.end = int32(off), int32(off+len(text))
			} else {
				n.end = int32(before)
				if text != "" {
					k := src.node(String, text, off, off+len(text))
					k.Key = "#text"
					n.Kids = append(n.Kids, k)
				}
			}
			stack, texts, starts = stack[:len(stack)-1], texts[:len(texts)-1], starts[:len(starts)-1]
		case xml.CharData:
			texts[len(texts)-1] = append(texts[len(texts)-1], t...)
		}
	}
	if len(root.Kids) == 0 {
		return nil, src.fail(0, "not valid XML: no element")
	}
	return root, nil
}

// All lists the kids of a map that have a key.
func (n *Node) All(key string) []*Node {
	var list []*Node
	for _, k := range n.Items() {
		if k.Key == key {
			list = append(list, k)
		}
	}
	return list
}
