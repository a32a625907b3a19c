package ship

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey"
	"ubique/core/value"
)

var ignored = &rules.Rule{
	ID: "ship/ignored", Level: rules.Blocker, Title: "needed, but an ignore rule keeps it out", Doc: doc("ignored"),
	Check: func(p *rules.Pass) {
		withheld(p, source.Ignored, func(on *rules.On, n need) {
			f := rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which an ignore rule keeps out: the host does not get it", n.file)}
			if at, ok := p.Tree.IgnoreRule(n.file); ok {
				f.Trail = []value.Step{{At: at, Note: "keeps it out"}}
			}
			f.Remedy = "!" + path.Base(n.file) + " after the ignore rule, or a build step that makes the file"
			p.Report(on, 0, f)
		})
		for _, on := range p.On {
			if on.Code == nil || on.Host.Route != "image" || on.Code.Descriptor == nil || on.Code.Descriptor.Image == nil {
				continue
			}
			im := on.Code.Descriptor.Image
			rule := survey.NewContext(p.Tree, on.Code.Descriptor.File, im)
			name := rule.File
			for _, c := range copies(on) {
				for _, s := range c.Sources {
					s = strings.TrimPrefix(path.Clean(s), "./")
					full := path.Join(im.Context, s)
					if s == "." || strings.ContainsAny(s, "*?[$") || !p.Tree.Has(full) {
						continue
					}
					if at, out := rule.Excludes(full); out {
						p.Report(on, 0, rules.Finding{Where: c.At, Message: fmt.Sprintf("copies %s, which %s keeps out of the build context: the build stops here", s, name), Trail: []value.Step{{At: at, Note: "keeps it out"}}, Remedy: "!" + s + " at the end of " + name})
					}
				}
			}
			for _, n := range needs(on.Code) {
				rel := strings.TrimPrefix(n.file, im.Context+"/")
				if at, out := rule.Excludes(n.file); out {
					p.Report(on, 0, rules.Finding{Where: n.at, Message: fmt.Sprintf("needs %s, which %s keeps out of the image", n.file, name), Trail: []value.Step{{At: at, Note: "keeps it out"}}, Remedy: "!" + rel + " at the end of " + name})
				}
			}
		}
	},
}
