package command

import (
	"slices"

	"ubique/core/value"
)

// nobody is a variable that is never set: reading it ends the shell.
const nobody = "\x00"

// raises reports whether the shell ends at a command because a variable that it insists
// on is not set (POSIX.1-2024, "2.6.2 Parameter Expansion").
func (s Simple) raises(env value.Environ) bool {
	return slices.ContainsFunc(s.values(), func(v *value.Value) bool { return v.Under(env).Raise })
}

func (s Simple) values() (list []*value.Value) {
	for _, w := range s.Words {
		if w.Value != nil {
			list = append(list, w.Value)
		}
	}
	for _, a := range s.Env {
		if a.Value != nil {
			list = append(list, a.Value)
		}
	}
	return list
}

// needs are the variables without which the shell ends at a command that it certainly
// comes to, or at an exit that stands under nothing but a test of one.
func (s Simple) needs() (list []Need) {
	if s.Inner || s.Background {
		return nil
	}
	if len(s.Tests) == 0 {
		for _, v := range s.values() {
			for _, x := range v.Variables() {
				if x.Text != nobody && v.Under(value.Environ{}).Raise && !v.Under(value.Environ{Set: map[string]string{x.Text: "1"}}).Raise {
					list = append(list, Need{x.Text, x.At})
				}
			}
		}
		return list
	}
	if len(s.Words) == 0 || s.Words[0].Text != "exit" || len(s.Tests) != 1 || s.Tests[0].On == nil || len(s.Words) > 1 && s.Words[1].Text == "0" {
		return nil
	}
	on := s.Tests[0]
	for _, x := range on.On.Variables() {
		without, ok := on.On.Under(value.Environ{}).Truth(false)
		with, ok2 := on.On.Under(value.Environ{Set: map[string]string{x.Text: "1"}}).Truth(false)
		if ok && ok2 && without == !on.Not && with == on.Not {
			list = append(list, Need{x.Text, x.At})
		}
	}
	return list
}
