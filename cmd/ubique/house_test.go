package main_test

import (
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
)

// floors are the packages from the top of the house to its ground; packages of
// one entry stand on the same floor. A package imports only what stands below.
var floors = [][]string{
	{"cmd/ubique"}, {"bench/plant"}, {"bench"}, {"cli"}, {"cli/render", "demo"}, {"core/check"}, {"core/rules/catalog"},
	{"core/rules/runtime", "core/rules/pin", "core/rules/manifest", "core/rules/ship", "core/rules/start", "core/rules/port", "core/rules/env", "core/rules/secret", "core/rules/settings", "core/rules/descriptor", "core/rules/internal/list", "core/fact/internal/table"},
	{"core/rules"}, {"core/host", "core/descriptor/container", "core/descriptor/process"}, {"core/survey/node", "core/survey/python", "core/survey/deno", "core/survey/ruby", "core/survey/java", "core/survey/golang", "core/survey/php", "core/survey/dotnet", "core/survey/rust", "core/survey/elixir", "core/survey/static", "core/survey/container"}, {"core/survey"}, {"core/fact"},
	{"core/command"}, {"core/trace"}, {"core/value"}, {"core/code"}, {"core/document", "core/version", "core/lock", "core/rust"}, {"core/source"}, {"core/place"},
}

func TestImportsGoDown(t *testing.T) {
	floor := map[string]int{}
	for i, f := range floors {
		for _, p := range f {
			floor[p] = i + 1
		}
	}
	root := filepath.Join("..", "..")
	err := filepath.WalkDir(root, func(p string, d os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		rel, _ := filepath.Rel(root, p)
		rel = filepath.ToSlash(rel)
		if d.IsDir() && (strings.HasPrefix(d.Name(), ".") && len(d.Name()) > 2 || rel == "demo/tree" || d.Name() == "testdata") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
			return nil
		}
		pkg := strings.TrimSuffix(rel[:len(rel)-len(filepath.Base(p))], "/")
		if floor[pkg] == 0 {
			t.Errorf("%s stands on no floor of the house", pkg)
			return nil
		}
		f, err := parser.ParseFile(token.NewFileSet(), p, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, imp := range f.Imports {
			name, _ := strconv.Unquote(imp.Path.Value)
			to, own := strings.CutPrefix(name, "ubique/")
			if own && floor[to] <= floor[pkg] {
				t.Errorf("%s imports %s, which does not stand below it", rel, to)
			}
			if strings.HasPrefix(pkg, "core/") && (name == "os/exec" || name == "net" || name == "net/http") {
				t.Errorf("%s imports %s: the core runs nothing and uses no network", rel, name)
			}
			if strings.HasPrefix(pkg, "core/") && name == "os" && pkg != "core/source" && pkg != "core/host" && !strings.Contains(pkg, "/internal/") {
				t.Errorf("%s imports os: only core/source touches the tree's files", rel)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
}
