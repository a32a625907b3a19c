// Package container reads container files (Dockerfile, Containerfile): bases
// through ARG and stages, ENV, EXPOSE, COPY, RUN, and the command in both
// forms (Dockerfile reference, read 2026-11).
package container

import (
	"errors"
	"path"
	"strconv"
	"strings"

	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// IsName tells container files by name: Dockerfile, Containerfile, and these
// with a suffix after a dot.
func IsName(base string) bool {
	return base == "Dockerfile" || base == "Containerfile"
}

// stage is one FROM and what follows.
type stage struct {
	base   fact.Base
	env    map[string]*value.Value
	envAt  map[string]place.Span
	dir    string
	expose []fact.Expose
	entry  *instruction
	cmd    *instruction
	copies []fact.Copy
	runs   []fact.Run
	parent int // the stage it is built on, -1 for an image
	user   string
	userAt place.Span
}

type instruction struct {
	args []string
	json bool
	text string
	at   place.Span
}

type reader struct {
	name   string
	file   *source.File
	global map[string]string // ARGs before the first FROM
	stages []*stage
	err    *document.Error
}

// Read reads a container file.
func Read(name string, f *source.File) *fact.Descriptor {
	d := &fact.Descriptor{File: name, Format: "container file", How: "read"}
	r := &reader{name: name, file: f, global: map[string]string{}}
	res, err := parse(f.Data)
	if err != nil {
		d.Err = r.syntaxError(err)
		return d
	}
	for _, n := range res {
		r.instruction(n)
	}
	if r.err != nil {
		d.Err = r.err
		return d
	}
	if len(r.stages) == 0 {
		d.Err = &document.Error{At: place.Span{File: name, Line: 1, Col: 1, EndLine: 1, EndCol: 1}, Expected: "no FROM: a container file begins with a base image"}
		return d
	}
	d.Image = r.image()
	return d
}

func (r *reader) syntaxError(err error) *document.Error {
	line := 1
	var se *syntaxError
	if errors.As(err, &se) {
		line = se.line
	}
	return &document.Error{At: r.line(line), Expected: "not a valid container file: " + err.Error()}
}

func (r *reader) line(n int) place.Span {
	text := r.file.Lines().Text(n)
	lead := len([]rune(text)) - len([]rune(strings.TrimLeft(text, " \t")))
	return place.Span{File: r.name, Line: n, Col: lead + 1, EndLine: n, EndCol: len([]rune(strings.TrimRight(text, " \t"))) + 1}
}

// find gives the place of a text in the lines of an instruction.
func (r *reader) find(n *node, text string) place.Span {
	if text == "" {
		return r.line(n.start)
	}
	for l := n.start; l <= max(n.end, n.start); l++ {
		line := r.file.Lines().Text(l)
		from := 0
		if l == n.start {
			if i := strings.IndexAny(strings.TrimLeft(line, " \t"), " \t"); i >= 0 {
				from = i + len(line) - len(strings.TrimLeft(line, " \t"))
			}
		}
		if i := strings.Index(line[min(from, len(line)):], text); i >= 0 {
			col := len([]rune(line[:from+i])) + 1
			return place.Span{File: r.name, Line: l, Col: col, EndLine: l, EndCol: col + len([]rune(text))}
		}
	}
	return r.line(n.start)
}

// known are the instructions of the reference.
const known = " add arg cmd copy entrypoint env expose from healthcheck label maintainer onbuild run shell stopsignal user volume workdir "

func (r *reader) instruction(n *node) {
	word, a := n.word, n.args
	if !strings.Contains(known, " "+word+" ") {
		if r.err == nil {
			r.err = &document.Error{At: r.line(n.start), Expected: "an instruction is wanted here (FROM, RUN, COPY, CMD, …), not " + strconv.Quote(strings.ToUpper(n.word))}
		}
		return
	}
	if word == "arg" && len(r.stages) == 0 {
		for _, x := range a {
			k, v, _ := strings.Cut(x, "=")
			r.global[k] = strings.Trim(v, `"'`)
		}
		return
	}
	if word == "from" {
		r.from(n, a)
		return
	}
	if len(r.stages) == 0 {
		if r.err == nil {
			r.err = &document.Error{At: r.line(n.start), Expected: strings.ToUpper(word) + " stands before the first FROM"}
		}
		return
	}
	s := r.stages[len(r.stages)-1]
	switch word {
	case "arg":
		for _, x := range a {
			k, v, has := strings.Cut(x, "=")
			if g, ok := r.global[k]; ok && !has {
				v, has = g, true
			}
			if has {
				if _, set := s.env[k]; !set {
					s.env[k] = value.Text(strings.Trim(v, `"'`), r.find(n, k))
				}
			}
		}
	case "env":
		for i := 0; i+1 < len(a); i += 2 {
			at := r.find(n, a[i])
			s.env[a[i]] = r.expand(a[i+1], s, at)
			s.envAt[a[i]] = at
		}
	case "workdir":
		if len(a) > 0 {
			d := r.text(a[0], s)
			if !strings.HasPrefix(d, "/") {
				d = path.Join(s.dir, d)
			}
			s.dir = path.Clean(d)
		}
	case "expose":
		for _, x := range a {
			p, _, _ := strings.Cut(r.text(x, s), "/")
			if strings.HasSuffix(x, "/udp") {
				continue
			}
			if port, err := strconv.Atoi(p); err == nil {
				s.expose = append(s.expose, fact.Expose{Port: port, At: r.find(n, x)})
			}
		}
	case "copy", "add":
		c := fact.Copy{At: r.line(n.start), Dir: s.dir}
		for _, f := range n.flags {
			if v, ok := strings.CutPrefix(f, "--from="); ok {
				c.FromStage = v
			}
			if v, ok := strings.CutPrefix(f, "--chmod="); ok {
				c.Mode = v
			}
		}
		if len(a) < 2 {
			return
		}
		for _, x := range a[:len(a)-1] {
			c.Sources = append(c.Sources, r.text(x, s))
		}
		c.Dest = r.text(a[len(a)-1], s)
		s.copies = append(s.copies, c)
	case "user":
		if len(a) > 0 {
			s.user, s.userAt = r.text(a[0], s), r.line(n.start)
		}
	case "run":
		env := map[string]string{}
		for k, v := range s.env {
			if v.Kind == value.Str {
				env[k] = v.Text
			}
		}
		s.runs = append(s.runs, fact.Run{Text: strings.Join(a, " "), Env: env, At: r.line(n.start)})
	case "cmd", "entrypoint":
		in := &instruction{args: a, json: n.json}
		in.text = strings.Join(a, " ")
		if in.json = in.json && len(a) > 0; !in.json && len(a) > 0 {
			first, _, _ := strings.Cut(a[0], "\n")
			in.at = r.find(n, first)
		}
		if word == "cmd" {
			s.cmd = in
		} else {
			s.entry = in
			s.cmd = nil // an entry point drops the base's command
		}
		if in.json {
			in.at = r.find(n, strconv.Quote(a[0]))
		}
	}
}

func (r *reader) from(n *node, a []string) {
	if len(a) == 0 {
		return
	}
	s := &stage{env: map[string]*value.Value{}, envAt: map[string]place.Span{}, dir: "/", parent: -1}
	s.base.Text, s.base.At = a[0], r.find(n, a[0])
	if len(a) >= 3 && strings.EqualFold(a[1], "as") {
		s.base.Stage = a[2]
	}
	image := r.globalText(a[0])
	if strings.Contains(image, "$") {
		s.base.Unknown = true
	}
	for i, p := range r.stages {
		if strings.EqualFold(p.base.Stage, image) || image == strconv.Itoa(i) {
			s.parent = i
			s.dir = p.dir
			s.user, s.userAt = p.user, p.userAt
			for k, v := range p.env {
				s.env[k] = v
			}
			for k, v := range p.envAt {
				s.envAt[k] = v
			}
			s.expose = append(s.expose, p.expose...)
			s.entry, s.cmd = p.entry, p.cmd
		}
	}
	if s.parent < 0 {
		image, s.base.Digest, _ = strings.Cut(image, "@")
		slash := strings.LastIndexByte(image, '/')
		if i := strings.LastIndexByte(image, ':'); i > slash {
			s.base.Name, s.base.Tag = image[:i], image[i+1:]
		} else {
			s.base.Name = image
		}
	} else {
		s.base.Name = ""
	}
	r.stages = append(r.stages, s)
}

// globalText puts the ARGs before the first FROM into a text.
func (r *reader) globalText(s string) string {
	return expandText(s, func(name string) (string, bool) { v, ok := r.global[name]; return v, ok && v != "" })
}

// text expands what is literal under a stage's variables.
func (r *reader) text(s string, st *stage) string {
	return expandText(s, func(name string) (string, bool) {
		if v, ok := st.env[name]; ok && v.Kind == value.Str {
			return v.Text, true
		}
		return "", false
	})
}

func (r *reader) expand(s string, st *stage, at place.Span) *value.Value {
	return value.Text(r.text(s, st), at)
}

// expandText replaces $NAME, ${NAME} and ${NAME:-default}; what is not known
// stays as it is.
func expandText(s string, lookup func(string) (string, bool)) string {
	var b strings.Builder
	for i := 0; i < len(s); {
		if s[i] != '$' || i+1 >= len(s) {
			b.WriteByte(s[i])
			i++
			continue
		}
		j := i + 1
		name, def, braces := "", "", s[j] == '{'
		if braces {
			k := strings.IndexByte(s[j:], '}')
			if k < 0 {
				b.WriteString(s[i:])
				break
			}
			name = s[j+1 : j+k]
			if x, d, ok := strings.Cut(name, ":-"); ok {
				name, def = x, d
			}
			j += k + 1
		} else {
			for j < len(s) && (s[j] == '_' || s[j] >= '0' && s[j] <= '9' || s[j] >= 'a' && s[j] <= 'z' || s[j] >= 'A' && s[j] <= 'Z') {
				j++
			}
			name = s[i+1 : j]
		}
		if v, ok := lookup(name); ok {
			b.WriteString(v)
		} else if def != "" {
			b.WriteString(def)
		} else {
			b.WriteString(s[i:j])
		}
		i = j
	}
	return b.String()
}

// image sums up the last stage, with what the stages before it did.
func (r *reader) image() *fact.Image {
	last := r.stages[len(r.stages)-1]
	im := &fact.Image{Env: last.env, EnvAt: last.envAt, Expose: last.expose, WorkDir: last.dir, User: last.user, UserAt: last.userAt}
	final := map[int]bool{}
	for i := len(r.stages) - 1; i >= 0; i = r.stages[i].parent {
		final[i] = true
	}
	for i, s := range r.stages {
		b := s.base
		b.Final = final[i]
		im.Stages = append(im.Stages, fact.Stage{Name: b.Stage, Parent: s.parent})
		if s.parent < 0 {
			im.Bases = append(im.Bases, b)
		}
		for _, c := range s.copies {
			c.Final, c.Stage = final[i], i
			im.Copies = append(im.Copies, c)
		}
		for _, x := range s.runs {
			x.Final, x.Stage = final[i], i
			im.Runs = append(im.Runs, x)
		}
	}
	r.command(im, last)
	return im
}

// command joins the entry point and the command as the reference's table
// "Understand how CMD and ENTRYPOINT interact" says.
func (r *reader) command(im *fact.Image, s *stage) {
	in := s.cmd
	if s.entry != nil {
		in = s.entry
	}
	if in == nil || len(in.args) == 0 {
		r.inherited(im, in != nil)
		return
	}
	im.HasCmd = true
	im.At = in.at
	if !in.json {
		im.Form = "shell"
		im.Text = in.text
		line, err := command.Parse(in.text, in.at)
		if err != nil {
			im.Problem = err.Error()
			return
		}
		im.Command = line
		return
	}
	im.Form = "exec"
	var words []string
	var at []place.Span
	add := func(i *instruction) {
		for k, w := range i.args {
			words = append(words, w)
			at = append(at, r.word(i, k))
		}
	}
	add(in)
	if s.entry != nil && s.cmd != nil && s.cmd.json {
		add(s.cmd)
	}
	im.Text = strings.Join(words, " ")
	im.Command = command.ParseExec(words, at)
}

// inherited takes the command that the base image has, where it is known.
func (r *reader) inherited(im *fact.Image, emptied bool) {
	for _, b := range im.Bases {
		if !b.Final || b.Unknown {
			im.Unknown = im.Unknown || b.Final
			continue
		}
		words, known := b.Starts()
		im.Unknown = !known
		if words == nil || emptied {
			continue
		}
		at := make([]place.Span, len(words))
		for i := range at {
			at[i] = b.At
		}
		im.HasCmd, im.Inherited, im.At, im.Form = true, true, b.At, "exec"
		im.Text = strings.Join(words, " ")
		im.Command = command.ParseExec(words, at)
	}
}

// word finds the place of a word of an exec form.
func (r *reader) word(in *instruction, k int) place.Span {
	from := in.at
	for l := from.Line; l < from.Line+20 && l <= r.file.Lines().Count(); l++ {
		line := r.file.Lines().Text(l)
		start := 0
		if i := strings.IndexByte(line, '['); i >= 0 && l == from.Line {
			start = i
		}
		seen := 0
		// Walk over the quoted words of the line up to the k-th.
		for i := start; i < len(line); i++ {
			if line[i] != '"' {
				continue
			}
			j := i + 1
			for j < len(line) && line[j] != '"' {
				if line[j] == '\\' {
					j++
				}
				j++
			}
			j = min(j, len(line))
			if line[i+1:j] == in.args[k] && seen >= 0 {
				if countBefore(in.args, k) == occurrences(line[start:i], in.args[k]) || l > from.Line {
					col := len([]rune(line[:i+1])) + 1
					return place.Span{File: r.name, Line: l, Col: col, EndLine: l, EndCol: col + len([]rune(in.args[k]))}
				}
			}
			seen++
			i = j
		}
		if !strings.HasSuffix(strings.TrimSpace(line), `\`) {
			break
		}
	}
	return from
}

func countBefore(args []string, k int) int {
	n := 0
	for _, a := range args[:k] {
		if a == args[k] {
			n++
		}
	}
	return n
}

func occurrences(s, word string) int { return strings.Count(s, `"`+word+`"`) }

// InTree maps a path inside the image to the path of the tree that is copied
// there, through the stages where it must; ok is false for paths that the
// image makes itself. A path of the tree need not exist there: a stage may
// build it.
func InTree(im *fact.Image, p string) (string, bool) {
	if !strings.HasPrefix(p, "/") {
		p = path.Join(im.WorkDir, p)
	}
	return inStage(im, len(im.Stages)-1, path.Clean(p))
}

// inStage finds what a stage holds under an absolute path. Copies lead to
// earlier stages only, so it ends.
func inStage(im *fact.Image, stage int, p string) (string, bool) {
	var best fact.Copy
	rest, bestLen := "", -1
	line := map[int]bool{} // the stage and those it is built on
	for i := stage; i >= 0; i = im.Stages[i].Parent {
		line[i] = true
	}
	for _, c := range im.Copies {
		if !line[c.Stage] {
			continue
		}
		dest := c.Dest
		if !strings.HasPrefix(dest, "/") {
			trail := strings.HasSuffix(dest, "/") || dest == "."
			dest = path.Join(c.Dir, dest)
			if trail {
				dest += "/"
			}
		}
		for _, s := range c.Sources {
			clean := path.Clean("/" + s)[1:]
			base := path.Base(clean)
			isFile := clean != "" && path.Ext(base) != "" && !strings.HasSuffix(s, "/")
			if path.Ext(base) == base && c.FromStage != "" {
				isFile = false // .next, .output: what stages make is folders
			}
			d := strings.TrimSuffix(dest, "/")
			if isFile && (strings.HasSuffix(dest, "/") || path.Ext(dest) == "") {
				d = path.Join(dest, path.Base(clean))
			}
			in := ""
			switch {
			case p == d:
			case !isFile && (strings.HasPrefix(p, d+"/") || d == ""):
				in = strings.TrimPrefix(p[len(d):], "/")
			default:
				continue
			}
			if len(d) >= bestLen { // of two copies to one place the later one stays
				best, rest, bestLen = c, path.Join(clean, in), len(d)
			}
		}
	}
	if bestLen < 0 {
		return "", false
	}
	if best.FromStage != "" {
		for i := best.Stage - 1; i >= 0; i-- {
			if strings.EqualFold(im.Stages[i].Name, best.FromStage) || strconv.Itoa(i) == best.FromStage {
				return inStage(im, i, "/"+rest)
			}
		}
		return "", false // from another image
	}
	if rest = path.Join(im.Context, rest); rest == "." {
		rest = ""
	}
	return rest, true
}
