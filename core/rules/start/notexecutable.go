package start

import (
	"bytes"
	"fmt"
	"path"
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/value"
)

var notExecutable = &rules.Rule{
	ID: "start/not-executable", Level: rules.Blocker, Title: "the script that is started cannot be run", Doc: doc("not-executable"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			if on.Start == nil {
				continue
			}
			seen := map[string]bool{}
			for _, f := range append(on.Start.Final.Before[:len(on.Start.Final.Before):len(on.Start.Final.Before)], on.Start.Final) {
				for _, d := range f.Direct {
					if !seen[d.File] {
						seen[d.File] = true
						runnable(p, on, d)
					}
				}
			}
		}
	},
}

func runnable(p *rules.Pass, on *rules.On, d command.Direct) {
	if !p.Tree.Has(d.File) {
		return
	}
	if cr, _ := p.Tree.CarriageReturns(d.File); cr {
		return // ship/line-endings
	}
	f := rules.Finding{Where: place.Span{File: d.File, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Trail: []value.Step{rules.Step(d.At, "runs it by its path")}}
	image := (*fact.Image)(nil)
	if on.Start.Descriptor != nil {
		image = on.Start.Descriptor.Image
	}
	if !p.Tree.Executable(d.File) && !madeExecutable(image, d.File) {
		f.Message = fmt.Sprintf("%s is run by its path and has no execute bit: permission denied", d.File)
		f.Remedy = "git update-index --chmod=+x " + d.File
		if image != nil {
			f.Remedy = fmt.Sprintf("git update-index --chmod=+x %s, or RUN chmod +x in %s", d.File, on.Start.File)
		}
		p.Report(on, 0, f)
		return
	}
	if !d.Exec {
		return // a shell reads it where its first line names nothing
	}
	src, err := p.Tree.Code(d.File)
	if err != nil || len(src.Data) == 0 || bytes.HasPrefix(src.Data, []byte("#!")) || bytes.IndexByte(src.Data, 0) >= 0 || bytes.HasPrefix(src.Data, []byte("\x7fELF")) {
		return
	}
	f.Message = fmt.Sprintf("%s has no first line that names its interpreter, and no shell reads this form of the command: exec format error", d.File)
	f.Remedy = "#!/bin/sh"
	switch path.Ext(d.File) {
	case ".py":
		f.Remedy = "#!/usr/bin/env python3"
	case ".js", ".mjs":
		f.Remedy = "#!/usr/bin/env node"
	case ".rb":
		f.Remedy = "#!/usr/bin/env ruby"
	}
	p.Report(on, 0, f)
}

// madeExecutable reports whether a container file sets the bit, or may.
func madeExecutable(im *fact.Image, file string) bool {
	if im == nil {
		return false
	}
	for _, r := range im.Runs {
		if strings.Contains(r.Text, "chmod") || strings.Contains(r.Text, "install -m") {
			for w := range strings.FieldsSeq(strings.NewReplacer(";", " ", "&", " ", `"`, " ", "'", " ").Replace(r.Text)) {
				base := path.Base(w)
				if base == path.Base(file) || strings.ContainsAny(w, "*{$") || w == "-R" || w == "--recursive" {
					return true
				}
			}
		}
	}
	for _, c := range im.Copies {
		if c.Mode == "" {
			continue
		}
		for _, s := range c.Sources {
			if s == "." || path.Base(s) == path.Base(file) || strings.ContainsAny(s, "*") || strings.HasPrefix(file, strings.Trim(s, "./")+"/") {
				return true
			}
		}
	}
	return false
}
