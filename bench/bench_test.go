package bench

import (
	"fmt"
	"testing"

	"ubique/core/check"
)

// BenchmarkCheck measures a whole check: one small component, and trees of
// 300 components. Run it with go test -bench . ./bench; bench/compare gives
// the ratios of the budgets.
func BenchmarkCheck(b *testing.B) {
	for _, size := range []struct{ components, files int }{{1, 12}, {300, 6_000}, {300, 60_000}} {
		b.Run(fmt.Sprintf("components=%d/files=%d", size.components, size.files), func(b *testing.B) {
			dir := b.TempDir()
			if err := Write(dir, size.components, size.files); err != nil {
				b.Fatal(err)
			}
			hosts, err := check.Hosts(nil)
			if err != nil {
				b.Fatal(err)
			}
			b.ReportAllocs()
			for b.Loop() {
				r, err := check.Run(check.Options{Dir: dir, Hosts: hosts, Rules: true})
				if err != nil {
					b.Fatal(err)
				}
				if len(r.Components) != size.components {
					b.Fatalf("%d components were found, not %d", len(r.Components), size.components)
				}
			}
		})
	}
}

func TestWriteGivesWhatWasAskedFor(t *testing.T) {
	dir := t.TempDir()
	if err := Write(dir, 6, 120); err != nil {
		t.Fatal(err)
	}
	hosts, err := check.Hosts(nil)
	if err != nil {
		t.Fatal(err)
	}
	r, err := check.Run(check.Options{Dir: dir, Hosts: hosts, Rules: true})
	if err != nil {
		t.Fatal(err)
	}
	if len(r.Components) != 6 || r.Shipped != 120 {
		t.Errorf("the tree has %d components and %d files, not 6 and 120", len(r.Components), r.Shipped)
	}
	for _, f := range r.Findings {
		t.Errorf("the tree to measure is sound, and %s says at %s: %s", f.Rule, f.Where, f.Message)
	}
}
