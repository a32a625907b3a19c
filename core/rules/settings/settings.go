package settings

import (
	"slices"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/value"
)

// each goes through the settings of the starts that count on the hosts.
func each(p *rules.Pass, names []string, look func(on *rules.On, s fact.Setting)) {
	for _, on := range p.On {
		if on.Code == nil {
			continue
		}
		for _, s := range on.Code.Settings {
			if slices.Contains(names, s.Name) {
				look(on, s)
			}
		}
	}
}

// trail leads from the production module to an inherited value.
func trail(s fact.Setting) []value.Step {
	var list []value.Step
	for _, st := range s.Value.Trail() {
		if st.At.File != s.At.File || st.At.Line != s.At.Line {
			list = append(list, st)
		}
	}
	return list
}

// texts gives the entries of a list of hosts; ok is false when it cannot be
// told.
func texts(o value.Outcome) ([]string, bool) {
	if o.Kind == value.Str {
		return []string{o.Text}, true
	}
	if o.Kind != value.List {
		return nil, false
	}
	var list []string
	for _, x := range o.List {
		if x.Kind != value.Str {
			return nil, false
		}
		list = append(list, x.Text)
	}
	return list, true
}
