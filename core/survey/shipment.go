package survey

import (
	"sort"
	"strings"

	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
)

// Shipments says what of a component reaches a host by each route, and what
// stays behind and why.
func Shipments(t *source.Tree, c *fact.Component) []fact.Shipment {
	list := []fact.Shipment{byTree(t, c.Dir)}
	for _, d := range c.Descriptors {
		if d.Image != nil {
			list = append(list, byImage(t, d))
		}
	}
	return list
}

// group collects files that stay behind for one reason.
type group struct {
	dir   string
	files int
	first string
	why   string
	at    place.Span
	whole bool // nothing of the folder ships
}

// byTree follows the route of the tree below a folder.
func byTree(t *source.Tree, dir string) fact.Shipment {
	s := fact.Shipment{Route: string(t.Route), Root: dir}
	ships := map[string]bool{} // folders of which something ships
	var left []source.Entry
	for _, e := range t.Below(dir) {
		if !e.OnDisk {
			continue
		}
		if t.State(e.Path) == source.Shipped {
			s.Files++
			for d := source.Dir(e.Path); d != "" && !ships[d]; d = source.Dir(d) {
				ships[d] = true
			}
			continue
		}
		left = append(left, e)
	}
	groups := map[string]*group{}
	for _, e := range left {
		why, at := "not in git", place.Span{}
		if e.Ignored {
			why = "ignored"
		}
		key := e.Path // a file among others that ship stands for itself
		whole := false
		for d := source.Dir(e.Path); d != dir && d != "" && !ships[d]; d = source.Dir(d) {
			key, whole = d, true
		}
		g := groups[key+"\x00"+why]
		if g == nil {
			if e.Ignored {
				if span, ok := t.IgnoreRule(e.Path); ok {
					at = span
				}
			}
			g = &group{dir: key, first: e.Path, why: why, at: at, whole: whole}
			groups[key+"\x00"+why] = g
		}
		g.files++
	}
	for _, p := range t.Skipped {
		if dir == "" || strings.HasPrefix(p, dir+"/") {
			_, what, _ := source.DependencyPath(p + "/x")
			if what == "" {
				what = "a virtual environment"
			}
			s.Left = append(s.Left, fact.Left{Path: p + "/", Why: what})
		}
	}
	for _, p := range t.Modules {
		if dir == "" || p == dir || strings.HasPrefix(p, dir+"/") {
			s.Left = append(s.Left, fact.Left{Path: p + "/", Why: "a repository of its own (git submodule): it comes only where the host fetches it"})
		}
	}
	for _, g := range groups {
		p := g.dir
		if g.whole {
			p += "/"
		}
		s.Left = append(s.Left, fact.Left{Path: p, Files: g.files, Why: g.why, At: g.at})
	}
	for _, e := range t.Below(dir) {
		if t.State(e.Path) == source.Shipped && !e.Link && t.Attributes(e.Path).Filter == "lfs" {
			s.Left = append(s.Left, fact.Left{Path: e.Path, Why: "ships as a pointer to a large file"})
		}
	}
	sort.Slice(s.Left, func(i, j int) bool { return s.Left[i].Path < s.Left[j].Path })
	return s
}

// byImage follows the build context of a container file.
func byImage(t *source.Tree, d *fact.Descriptor) fact.Shipment {
	s := fact.Shipment{Route: "image", Root: d.Image.Context, By: d.File}
	c := NewContext(t, d.File, d.Image)
	byLine := map[place.Span]*fact.Left{}
	for _, e := range t.Below(d.Image.Context) {
		if !e.OnDisk {
			continue
		}
		at, out := c.Excludes(e.Path)
		if !out {
			s.Files++
			continue
		}
		l := byLine[at]
		if l == nil {
			l = &fact.Left{Path: e.Path, Why: "kept out", At: at}
			byLine[at] = l
		}
		l.Files++
	}
	for _, l := range byLine {
		s.Left = append(s.Left, *l)
	}
	for _, p := range t.Skipped {
		if root := d.Image.Context; root == "" || strings.HasPrefix(p, root+"/") {
			if at, out := c.Excludes(p + "/x"); out {
				s.Left = append(s.Left, fact.Left{Path: p + "/", Why: "kept out", At: at})
			} else {
				s.Whole = append(s.Whole, p+"/")
			}
		}
	}
	sort.Slice(s.Left, func(i, j int) bool { return s.Left[i].Path < s.Left[j].Path })
	return s
}
