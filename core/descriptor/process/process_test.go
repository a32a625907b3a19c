package process_test

import (
	"fmt"
	"strings"
	"testing"

	"ubique/core/descriptor/process"
	"ubique/core/source"
)

func TestRead(t *testing.T) {
	d := process.Read("Procfile", &source.File{Path: "Procfile", Data: []byte("# comment\n\nweb: node server.js\r\n  worker:\tnode worker.js # not a comment here\nurl: curl http://x:80/\n")})
	var got []string
	for _, p := range d.Procs {
		got = append(got, fmt.Sprintf("%s=%s@%d:%d,%d", p.Name, p.Command, p.At.Line, p.NameAt.Col, p.At.Col))
	}
	want := "web=node server.js@3:1,6|worker=node worker.js # not a comment here@4:3,11|url=curl http://x:80/@5:1,6"
	if s := strings.Join(got, "|"); s != want || d.Err != nil {
		t.Errorf("the processes are\n%s\nnot\n%s (%v)", s, want, d.Err)
	}
	for text, line := range map[string]int{"web: a\nnode x\n": 2, "web = node x\n": 1, ": x": 1, "we b: x": 1} {
		if d := process.Read("Procfile", &source.File{Path: "Procfile", Data: []byte(text)}); d.Err == nil || d.Err.At.Line != line {
			t.Errorf("%q gives %v, not an error in line %d", text, d.Err, line)
		}
	}
}

func FuzzProcessFile(f *testing.F) {
	f.Add("web: a\n b : c\n")
	f.Fuzz(func(t *testing.T, text string) {
		for _, p := range process.Read("Procfile", &source.File{Path: "Procfile", Data: []byte(text)}).Procs {
			if p.Name == "" || p.At.Line < 1 {
				t.Fatalf("a process without a name or a place: %+v", p)
			}
		}
	})
}
