package source

import (
	"bytes"
	"path/filepath"
	"strings"
	"sync"

	"github.com/go-git/go-git/v5/plumbing/format/gitignore"
)

// Attributes are what .gitattributes says of a file (gitattributes(5)).
type Attributes struct {
	Text   string // set, unset, auto; empty where nothing is said
	EOL    string // lf, crlf
	Filter string // lfs for files that git keeps elsewhere
}

type attributeRule struct {
	pattern gitignore.Pattern
	set     []string
}

type attributeRules struct {
	once  sync.Once
	rules []attributeRule // the later win
}

// Attributes gives the attributes of a path, after the .gitattributes files
// of the folders from the root down to its own.
func (t *Tree) Attributes(p string) Attributes {
	t.attributes.once.Do(func() { t.attributes.rules = t.readAttributes() })
	var a Attributes
	parts := strings.Split(p, "/")
	for _, r := range t.attributes.rules {
		if r.pattern.Match(parts, false) != gitignore.Exclude {
			continue
		}
		for _, s := range r.set {
			name, value, _ := strings.Cut(s, "=")
			switch name {
			case "binary", "-text":
				a.Text = "unset"
			case "text":
				if a.Text = "set"; value == "auto" {
					a.Text = "auto"
				}
			case "!text":
				a.Text = ""
			case "eol":
				a.EOL = value
			case "-eol", "!eol":
				a.EOL = ""
			case "filter":
				a.Filter = value
			case "-filter", "!filter":
				a.Filter = ""
			}
		}
	}
	return a
}

func (t *Tree) readAttributes() []attributeRule {
	var list []attributeRule
	for _, e := range t.Entries { // sorted: a folder's own file comes before those below it
		if e.Path != ".gitattributes" && !strings.HasSuffix(e.Path, "/.gitattributes") || !e.OnDisk {
			continue
		}
		f, err := t.Code(e.Path)
		if err != nil {
			continue
		}
		var domain []string
		if d := Dir(e.Path); d != "" {
			domain = strings.Split(d, "/")
		}
		for line := range strings.SplitSeq(string(f.Data), "\n") {
			fields := strings.Fields(line)
			if len(fields) < 2 || fields[0][0] == '#' || fields[0][0] == '!' {
				continue
			}
			list = append(list, attributeRule{gitignore.ParsePattern(fields[0], domain), fields[1:]})
		}
	}
	return list
}

// CarriageReturns reports whether the host gets a file with carriage returns
// at the ends of its lines, and by what: the file itself, or an attribute.
func (t *Tree) CarriageReturns(p string) (got bool, by string) {
	f, err := t.Code(p)
	if err != nil {
		return false, ""
	}
	has := bytes.Contains(f.Data, []byte("\r\n"))
	if t.Route != Git || t.State(p) != Shipped {
		return has, "its lines end in CR LF"
	}
	a := t.Attributes(p)
	switch {
	case a.EOL == "crlf" && a.Text != "unset":
		return true, ".gitattributes says eol=crlf"
	case !has:
		return false, ""
	case a.EOL == "lf" || a.Text == "set" || a.Text == "auto" || a.Text == "" && t.converts:
		return false, "" // git makes it LF on the way
	}
	return true, "its lines end in CR LF"
}

// converts reports whether the repository's settings turn CR LF into LF.
func (r *repository) convertsLineEnds() bool {
	text, err := readSmall(filepath.Join(r.commonDir, "config"))
	if err != nil {
		return false
	}
	for line := range strings.SplitSeq(text, "\n") {
		key, value, _ := strings.Cut(line, "=")
		if strings.EqualFold(strings.TrimSpace(key), "autocrlf") {
			v := strings.ToLower(strings.TrimSpace(value))
			return v == "true" || v == "input"
		}
	}
	return false
}
