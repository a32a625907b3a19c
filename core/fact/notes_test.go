package fact_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"ubique/core/fact"
)

func TestEveryServerIsInTheDocumentation(t *testing.T) {
	seen := map[string]bool{}
	for _, n := range fact.Notes {
		if _, ok := fact.Servers[n.Key]; !ok {
			t.Errorf("%s is noted and is no server", n.Key)
		}
		if seen[n.Key] {
			t.Errorf("%s is noted twice", n.Key)
		}
		if n.Version == "" || n.Source == "" || n.Stands == "" {
			t.Errorf("%s has no version, source or name", n.Key)
		}
		seen[n.Key] = true
	}
	for key := range fact.Servers {
		if !seen[key] {
			t.Errorf("%s is not noted", key)
		}
	}
	page, err := os.ReadFile(filepath.Join("..", "..", "docs", "servers.md"))
	if err != nil {
		t.Fatal(err)
	}
	if string(page) != fact.ServersPage() {
		t.Error("docs/servers.md is not what the table says: run go generate in core/fact")
	}
	if strings.Count(string(page), "\n| ") != len(fact.Notes)+2 {
		t.Error("the table has not a row for each server")
	}
}
