package ship

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
)

var outside = &rules.Rule{
	ID: "ship/outside", Level: rules.Risk, Title: "a link or a path that leaves the tree", Doc: doc("outside"),
	Tree: func(p *rules.TreePass) {
		for _, c := range p.Components {
			for _, x := range c.Outside {
				p.Report(rules.Blocker, "", rules.Finding{Where: x.At, Message: fmt.Sprintf("%s leads out of the tree: the host gets the tree and nothing around it", x.Text), Remedy: "a copy inside the tree, or the package from its registry"})
			}
			for _, on := range p.On[c.ID] {
				for _, cp := range copies(on) {
					for _, s := range cp.Sources {
						if on.Host.Route == "image" && (s == ".." || strings.HasPrefix(s, "../")) {
							p.Report(rules.Blocker, "image", rules.Finding{Where: cp.At, Message: fmt.Sprintf("copies %s, which is outside of the build context: the build refuses it", s), Remedy: "build with the folder above as the context, and paths from there"})
						}
					}
				}
			}
		}
		for _, e := range p.Tree.Entries {
			if !e.Link || !p.Tree.OutOfTree(e.Path) || p.Tree.State(e.Path) != source.Shipped {
				continue
			}
			p.Report(0, "git", rules.Finding{Where: place.Span{File: e.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Message: e.Path + " is a link that leads out of the tree: on the host it leads nowhere", Remedy: "the file itself in place of the link"})
		}
	},
}

// copies are the files that the container file of a start takes from its
// build context.
func copies(on *rules.On) []fact.Copy {
	if on.Code == nil || on.Code.Descriptor == nil || on.Code.Descriptor.Image == nil {
		return nil
	}
	var list []fact.Copy
	for _, c := range on.Code.Descriptor.Image.Copies {
		if c.FromStage == "" {
			list = append(list, c)
		}
	}
	return list
}
