package document

import (
	"errors"
	"fmt"
	"strings"

	toml "github.com/pelletier/go-toml/v2"
	"github.com/pelletier/go-toml/v2/unstable"

	"ubique/core/place"
)

// TOML reads a TOML document (TOML 1.0).
func TOML(name string, data []byte, lines *place.Lines) (root *Node, err error) {
	src := newSource(name, lines)
	defer func() {
		if p := recover(); p != nil {
			root, err = nil, src.fail(0, "not valid TOML: could not be read")
		}
	}()
	// The parser keeps places; the decoder's checks (duplicate keys and
	// tables) are what makes a document invalid beyond its grammar.
	var probe map[string]any
	if err := toml.Unmarshal(data, &probe); err != nil {
		var de *toml.DecodeError
		if errors.As(err, &de) {
			row, col := de.Position()
			return nil, src.fail(lines.Offset(row, col), "not valid TOML: %s", strings.TrimPrefix(de.Error(), "toml: "))
		}
		return nil, src.fail(0, "not valid TOML: %s", strings.TrimPrefix(err.Error(), "toml: "))
	}
	root = src.node(Map, "", 0, len(data))
	at := root
	var p unstable.Parser
	p.Reset(data)
	for p.NextExpression() {
		e := p.Expression()
		switch e.Kind {
		case unstable.KeyValue:
			holder, key := tomlHolder(src, at, e, data)
			v := tomlValue(src, &p, e.Value(), data)
			v.Key, v.keyOff, v.keyEnd = key.Key, key.keyOff, key.keyEnd
			holder.Kids = append(holder.Kids, v)
		case unstable.Table:
			holder, key := tomlHolder(src, root, e, data)
			at = holder.Get(key.Key)
			if at == nil {
				key.Kind = Map
				at = key
				holder.Kids = append(holder.Kids, key)
			}
		case unstable.ArrayTable:
			holder, key := tomlHolder(src, root, e, data)
			list := holder.Get(key.Key)
			if list == nil {
				key.Kind = List
				list = key
				holder.Kids = append(holder.Kids, key)
			}
			at = src.node(Map, "", int(key.off), int(key.end))
			list.Kids = append(list.Kids, at)
		}
	}
	if err := p.Error(); err != nil {
		return nil, src.fail(0, "not valid TOML: %v", err)
	}
	return root, nil
}

// tomlHolder walks the dotted key of an expression down to the map that holds
// its last part, and gives that part as a node without a value.
func tomlHolder(src *source, at *Node, e *unstable.Node, data []byte) (holder, key *Node) {
	var parts []*Node
	for it := e.Key(); it.Next(); {
		k := it.Node()
		off, end := int(k.Raw.Offset), int(k.Raw.Offset+k.Raw.Length)
		n := src.node(Map, "", off, end)
		n.Key, n.keyOff, n.keyEnd = string(k.Data), int32(off), int32(end)
		parts = append(parts, n)
	}
	for _, n := range parts[:len(parts)-1] {
		next := at.Get(n.Key)
		if next == nil {
			next = n
			at.Kids = append(at.Kids, n)
		}
		if next.Kind == List && len(next.Kids) > 0 {
			next = next.Kids[len(next.Kids)-1]
		}
		at = next
	}
	return at, parts[len(parts)-1]
}

func tomlValue(src *source, p *unstable.Parser, v *unstable.Node, data []byte) *Node {
	off, end := int(v.Raw.Offset), int(v.Raw.Offset+v.Raw.Length)
	if v.Raw.Length == 0 && len(v.Data) > 0 {
		r := p.Range(v.Data)
		off, end = int(r.Offset), int(r.Offset+r.Length)
	}
	text := string(v.Data)
	switch v.Kind {
	case unstable.String:
		return src.node(String, text, off, end)
	case unstable.Bool:
		return src.node(Bool, text, off, end)
	case unstable.Integer, unstable.Float:
		return src.node(Number, text, off, end)
	case unstable.Array:
		n := src.node(List, "", off, end)
		for it := v.Children(); it.Next(); {
			c := it.Node()
			if c.Kind == unstable.Comment {
				continue
			}
			n.add(tomlValue(src, p, c, data))
		}
		return n
	case unstable.InlineTable:
		n := src.node(Map, "", off, end)
		for it := v.Children(); it.Next(); {
			kv := it.Node()
			if kv.Kind != unstable.KeyValue {
				continue
			}
			holder, key := tomlHolder(src, n, kv, data)
			c := tomlValue(src, p, kv.Value(), data)
			c.Key, c.keyOff, c.keyEnd = key.Key, key.keyOff, key.keyEnd
			holder.Kids = append(holder.Kids, c)
			if n.end == n.off {
				n.off = c.keyOff
			}
			n.end = max(n.end, c.end)
		}
		return n
	}
	return src.node(String, fmt.Sprint(text), off, end)
}

func (n *Node) add(c *Node) {
	if len(n.Kids) == 0 && n.end <= n.off {
		n.off = c.off
	}
	n.end = max(n.end, c.end)
	n.Kids = append(n.Kids, c)
}
