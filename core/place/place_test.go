package place_test

import (
	"testing"

	"ubique/core/place"
)

func TestLines(t *testing.T) {
	l := place.NewLines([]byte("añb\r\ncd\n\ne\rf"))
	for off, want := range map[int][2]int{0: {1, 1}, 1: {1, 2}, 3: {1, 3}, 4: {1, 4}, 6: {2, 1}, 9: {3, 1}, 10: {4, 1}, 12: {5, 1}, 99: {5, 2}, -1: {1, 1}} {
		if line, col := l.Position(off); line != want[0] || col != want[1] {
			t.Errorf("offset %d is %d:%d, not %d:%d", off, line, col, want[0], want[1])
		}
	}
	for n, want := range map[int]string{1: "añb", 2: "cd", 3: "", 4: "e", 5: "f", 6: "", 0: ""} {
		if got := l.Text(n); got != want {
			t.Errorf("line %d is %q, not %q", n, got, want)
		}
	}
	if off := l.Offset(1, 3); off != 3 {
		t.Errorf("1:3 is offset %d", off)
	}
	if off := l.Offset(99, 1); off != 13 {
		t.Errorf("a line that is not there is offset %d", off)
	}
	if s := l.Span("f", 1, 4); s.String() != "f:1:2" || s.EndCol != 4 {
		t.Errorf("the span is %s to %d", s, s.EndCol)
	}
	if place.Whole("f").String() != "f" || !(place.Span{}).IsZero() {
		t.Error("a file as a whole has no line")
	}
	if !(place.Span{File: "a", Line: 2, Col: 1}).Before(place.Span{File: "a", Line: 10, Col: 1}) || (place.Span{File: "b"}).Before(place.Span{File: "a"}) {
		t.Error("spans are out of order")
	}
}
