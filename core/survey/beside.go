package survey

import (
	"slices"

	"ubique/core/command"
	"ubique/core/fact"
	"ubique/core/value"
)

// maxBeside is for how many programs that a command leaves in the background their
// listeners are looked for.
const maxBeside = 4

// beside adds the listeners and the variables of programs that the command sends to the
// background before it comes to the last one: they run beside it.
func (s *Starter) beside(st *fact.Start, b Beginning) {
	if command.Fronts[st.Final.Program] { // they are reached through it
		return
	}
	n := 0
	for _, f := range st.Final.Before {
		if !f.Back || f.Reason != "" || f.Missing != nil || command.Fronts[f.Program] {
			continue
		}
		if n++; n > maxBeside {
			return
		}
		b.Final = &f
		other := s.Start(b)
		st.Beside = append(st.Beside, other)
		had := len(other.Listeners)
		st.Listeners = append(st.Listeners, other.Listeners...)
		for _, v := range other.Variables {
			if !slices.ContainsFunc(st.Variables, func(w fact.Variable) bool { return w.Name == v.Name && w.At == v.At }) {
				st.Variables = append(st.Variables, v)
			}
		}
		if other.More != nil {
			more := st.More
			st.More = func(env value.Environ) {
				if more != nil {
					more(env)
				}
				other.More(env)
				st.Listeners = append(st.Listeners, other.Listeners[had:]...)
			}
		}
	}
}
