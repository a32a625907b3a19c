package document

import (
	"bytes"
	"errors"
	"io"
	"regexp"
	"strconv"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"

	"ubique/core/place"
)

// Limits on YAML aliases: the number of nodes that a document may come to
// when its aliases are followed, and how deep it may nest.
const (
	maxYAMLNodes = 200_000
	maxYAMLDepth = 200
)

var yamlPlace = sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(`line (\d+): (.*)`) })

// YAML reads every document of a YAML stream (YAML 1.2). Aliases and merge
// keys are followed within a limit; the nodes keep the place of the anchor.
func YAML(name string, data []byte, lines *place.Lines) ([]*Node, error) {
	src := newSource(name, lines)
	dec := yaml.NewDecoder(bytes.NewReader(data))
	var docs []*Node
	budget := maxYAMLNodes
	for {
		var y yaml.Node
		err := decodeYAML(dec, &y)
		if errors.Is(err, io.EOF) {
			return docs, nil
		}
		if err != nil {
			text, off := err.Error(), 0
			if m := yamlPlace().FindStringSubmatch(text); m != nil {
				line, _ := strconv.Atoi(m[1])
				off = firstNonSpace(lines, line)
				text = m[2]
			}
			return docs, src.fail(off, "not valid YAML: %s", strings.TrimPrefix(text, "yaml: "))
		}
		if len(y.Content) == 0 {
			docs = append(docs, src.node(Null, "", 0, 0))
			continue
		}
		n := fromYAML(src, y.Content[0], &budget, 0)
		if budget < 0 {
			return docs, src.fail(0, "the document grows to more than %d nodes when its aliases are followed: not read", maxYAMLNodes)
		}
		docs = append(docs, n)
	}
}

// decodeYAML turns a panic of the library into an error.
func decodeYAML(dec *yaml.Decoder, y *yaml.Node) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = errors.New("line 1: could not be read")
		}
	}()
	return dec.Decode(y)
}

func firstNonSpace(lines *place.Lines, line int) int {
	text := lines.Text(line)
	return lines.Offset(line, len([]rune(text))-len([]rune(strings.TrimLeft(text, " \t")))+1)
}

func fromYAML(src *source, y *yaml.Node, budget *int, depth int) *Node {
	*budget--
	off := src.lines.Offset(y.Line, y.Column)
	if depth > maxYAMLDepth || *budget < 0 {
		*budget = -1
		return src.node(Null, "", off, off)
	}
	switch y.Kind {
	case yaml.AliasNode:
		n := fromYAML(src, y.Alias, budget, depth+1)
		return n
	case yaml.ScalarNode:
		kind := String
		switch y.Tag {
		case "!!int", "!!float":
			kind = Number
		case "!!bool":
			kind = Bool
		case "!!null":
			kind = Null
		}
		width := len(y.Value)
		switch y.Style {
		case yaml.DoubleQuotedStyle, yaml.SingleQuotedStyle:
			width += 2
		case yaml.LiteralStyle, yaml.FoldedStyle:
			width = 1
		}
		return src.node(kind, y.Value, off, off+width)
	case yaml.SequenceNode:
		n := src.node(List, "", off, off)
		for _, c := range y.Content {
			k := fromYAML(src, c, budget, depth+1)
			n.Kids = append(n.Kids, k)
			n.end = max(n.end, k.end)
		}
		return n
	case yaml.MappingNode:
		n := src.node(Map, "", off, off)
		for i := 0; i+1 < len(y.Content); i += 2 {
			k, v := y.Content[i], y.Content[i+1]
			kid := fromYAML(src, v, budget, depth+1)
			if k.Tag == "!!merge" {
				for _, m := range mergeParts(kid) {
					if n.Get(m.Key) == nil {
						n.Kids = append(n.Kids, m)
					}
				}
				continue
			}
			c := *kid
			c.Key = k.Value
			c.keyOff = int32(src.lines.Offset(k.Line, k.Column))
			c.keyEnd = c.keyOff + int32(len(k.Value))
			n.Kids = append(n.Kids, &c)
			n.end = max(n.end, c.end)
		}
		return n
	}
	return src.node(Null, "", off, off)
}

func mergeParts(n *Node) []*Node {
	if n.Kind == Map {
		return n.Kids
	}
	var list []*Node
	for _, k := range n.Kids {
		if k.Kind == Map {
			list = append(list, k.Kids...)
		}
	}
	return list
}
