package ship

import (
	"fmt"

	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
)

// Bounds on what is shipped, in bytes (design §7.1).
const (
	largeFile     = 50 << 20
	largeShipment = 500 << 20
)

var large = &rules.Rule{
	ID: "ship/large", Level: rules.Risk, Title: "a file over 50 MB, or a shipment over 500 MB", Doc: doc("large"),
	Tree: func(p *rules.TreePass) {
		var sum, most int64
		biggest := ""
		for _, e := range p.Tree.Entries {
			if p.Tree.Route == source.Git && !e.Tracked || p.Tree.Route == source.Upload && e.Ignored {
				continue
			}
			size := p.Tree.Size(e)
			if size > largeFile && p.Tree.Pointer(e.Path) {
				size = 0 // git ships the pointer
			}
			if size > most {
				most, biggest = size, e.Path
			}
			sum += size
			if size > largeFile {
				p.Report(0, "git", rules.Finding{Where: place.Span{File: e.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Message: fmt.Sprintf("%s has %d MB and goes up with every deployment", e.Path, size>>20), Remedy: "git rm --cached " + e.Path + ", and fetch it at build or at start from where it is kept"})
			}
		}
		if sum > largeShipment {
			p.Report(0, "git", rules.Finding{Where: place.Whole("."), Message: fmt.Sprintf("the shipment has %d MB; the largest file is %s with %d MB", sum>>20, biggest, most>>20), Remedy: "leave out what the program does not need to run"})
		}
	},
}
