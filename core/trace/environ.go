package trace

import (
	"maps"

	"ubique/core/value"
)

// variables are the environment as the program sees and changes it. What is asked of
// it is noted: another environment that says the same of that leads to the same.
type variables struct {
	cells map[string]string
	seen  *value.Seen
}

// get gives a variable, and whether it is set.
func (v variables) get(name string) (string, bool) {
	v.seen.Note(name)
	text, ok := v.cells[name]
	return text, ok
}

// text is a variable; it is empty where that is not set.
func (v variables) text(name string) string {
	text, _ := v.get(name)
	return text
}

// all is the whole environment.
func (v variables) all() map[string]string {
	v.seen.NoteAll()
	return v.cells
}

func (v variables) put(name, text string) { v.cells[name] = text }

func (v variables) drop(name string) { delete(v.cells, name) }

// clone is the environment of a process that this one makes.
func (v variables) clone() variables { return variables{maps.Clone(v.cells), v.seen} }

// fill sets what an object says, where it is not set already or over says so.
func (v variables) fill(from *object, over bool) {
	for _, k := range from.keys {
		if _, set := v.get(k); !set || over {
			v.put(k, show(from.cells[k].v))
		}
	}
}
