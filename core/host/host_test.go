package host_test

import (
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"ubique/core/document"
	"ubique/core/host"
	"ubique/core/place"
)

func TestKindsAreValid(t *testing.T) {
	kinds, err := host.Kinds()
	if err != nil {
		t.Fatal(err)
	}
	var names []string
	for _, k := range kinds {
		names = append(names, k.Name)
		if k.Title == "" || k.About == "" || len(k.Words()) < 4 {
			t.Errorf("%s is not explained", k.Name)
		}
	}
	if !slices.Equal(names, []string{"pushed", "image"}) {
		t.Errorf("the kinds are %v", names)
	}
	schema, err := document.JSON("schema", host.Schema(), place.NewLines(host.Schema()), false)
	if err != nil {
		t.Fatal(err)
	}
	files, err := filepath.Glob("kinds/*.yaml")
	if err != nil || len(files) != len(kinds) {
		t.Fatalf("%d files for %d kinds, %v", len(files), len(kinds), err)
	}
	for _, f := range files {
		data, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		docs, err := document.YAML(f, data, place.NewLines(data))
		if err != nil {
			t.Fatal(err)
		}
		for _, e := range document.Validate(schema, docs[0]) {
			t.Error(e)
		}
	}
}

func load(t *testing.T, text string) (*host.Contract, error) {
	t.Helper()
	p := filepath.Join(t.TempDir(), "hill.yaml")
	if err := os.WriteFile(p, []byte(text), 0o644); err != nil {
		t.Fatal(err)
	}
	kinds, err := host.Kinds()
	if err != nil {
		t.Fatal(err)
	}
	return host.Load(p, kinds)
}

func TestHostOfOnesOwn(t *testing.T) {
	h, err := load(t, "name: hill\ntitle: the server in the dome\nextends: pushed\nport:\n  how: injected\n  variable: DOME_PORT\nsets:\n  SKY: clear\n  NODE_ENV: staging\nruntimes: [python]\nversions:\n  python: ['3.13', '3.14']\n")
	if err != nil {
		t.Fatal(err)
	}
	if h.Name != "hill" || h.Port.Variable != "DOME_PORT" || h.Route != "git" || h.Process != "web" || !h.WebRequired {
		t.Errorf("what differs or what stays is lost: %+v", h)
	}
	if h.Sets["SKY"] != "clear" || h.Sets["NODE_ENV"] != "staging" || h.Sets["RACK_ENV"] != "production" {
		t.Errorf("it sets %v", h.Sets)
	}
	if h.Offers("node") || !h.Offers("python") || !slices.Equal(h.Versions["python"], []string{"3.13", "3.14"}) {
		t.Errorf("it offers %v, %v", h.Runtimes, h.Versions)
	}
	if h.Environment().Set["SKY"] != "clear" {
		t.Error("the environment does not hold what the host sets")
	}
	if words := strings.Join(h.Words(), "\n"); !strings.Contains(words, "DOME_PORT") || !strings.Contains(words, "SKY=clear") {
		t.Errorf("in words:\n%s", words)
	}
}

func TestBadHostsNameThePlace(t *testing.T) {
	for text, want := range map[string]string{
		"title: x\n":                                   "must have name",
		"name: Hill\ntitle: x\n":                       ":1:7: name must have the form",
		"name: hill\ntitle: x\nroute: ftp\n":           ":3:8: route must be one of",
		"name: hill\ntitle: x\nport: {how: guessed}\n": "port.how must be one of",
		"name: hill\ntitle: x\ncolour: red\n":          ":3:1: colour is not known",
		"name: hill\ntitle: x\nextends: moon\n":        "extends \"moon\", which is no host that is known",
		"name: hill\n  title: x\n":                     "not valid YAML",
		"":                                             "empty",
	} {
		if _, err := load(t, text); err == nil || !strings.Contains(err.Error(), want) || !strings.Contains(err.Error(), "hill.yaml") {
			t.Errorf("%q gives %v, which does not say %q and the file", text, err, want)
		}
	}
	kinds, _ := host.Kinds()
	if _, err := host.Load(filepath.Join(t.TempDir(), "none.yaml"), kinds); err == nil {
		t.Error("a file that is not there was loaded")
	}
}
