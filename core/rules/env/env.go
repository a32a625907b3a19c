package env

import (
	"slices"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
	"ubique/core/survey"
	"ubique/core/value"
)

// declared are the names that files declare for a component.
func declared(p *rules.Pass) map[string]fact.Declared {
	m := map[string]fact.Declared{}
	for _, d := range p.Component.Declared {
		if _, ok := m[d.Name]; !ok {
			m[d.Name] = d
		}
	}
	return m
}

// reads are the variables that the code reads on a host, each at the places
// where it is read, in their order; names in the order of the places.
func reads(on *rules.On) (names []string, at map[string][]fact.Variable) {
	names, at = written(on)
	if on.Code != nil && on.Code.Asks != nil {
		for _, v := range on.Code.Asks(on.Ported) {
			if len(at[v.Name]) == 0 {
				names, at[v.Name] = append(names, v.Name), []fact.Variable{v}
			}
		}
	}
	return names, at
}

// written are those of them that the code writes where it reads them.
func written(on *rules.On) (names []string, at map[string][]fact.Variable) {
	at = map[string][]fact.Variable{}
	if on.Code == nil {
		return nil, at
	}
	for _, v := range on.Code.Variables {
		if !live(v, on.Ported) {
			continue
		}
		if len(at[v.Name]) == 0 {
			names = append(names, v.Name)
		}
		at[v.Name] = append(at[v.Name], v)
	}
	return names, at
}

// live reports whether a read can happen on the host.
func live(v fact.Variable, env value.Environ) bool {
	for _, g := range v.Guards {
		if yes, ok := g.Under(env).Truth(false); ok && !yes {
			return false
		}
	}
	return true
}

// known are variables that the host, the platform or the command sets.
func known(on *rules.On, name string) bool {
	if survey.Ambient(name) || strings.EqualFold(name, on.Host.Port.Variable) || strings.EqualFold(name, "PORT") {
		return true
	}
	if _, ok := on.Host.Sets[name]; ok {
		return true
	}
	_, ok := on.Env.Lookup(name, false)
	return ok || slices.Contains(on.Host.Reserves, name)
}

// slip reports whether two names are one slip apart: a letter that is wrong,
// missing or doubled, two that are swapped, underscores, the letter case.
func slip(a, b string) bool {
	if a == b || len(a) < 4 || len(b) < 4 {
		return false
	}
	if strings.EqualFold(strings.ReplaceAll(a, "_", ""), strings.ReplaceAll(b, "_", "")) {
		return true
	}
	x, y := []byte(a), []byte(b)
	if len(x) > len(y) {
		x, y = y, x
	}
	if len(y)-len(x) > 1 {
		return false
	}
	i := 0
	for i < len(x) && x[i] == y[i] {
		i++
	}
	var differ []byte
	switch {
	case len(x) < len(y):
		if string(x[i:]) != string(y[i+1:]) {
			return false
		}
		differ = y[i : i+1]
	case i+1 < len(x) && x[i] == y[i+1] && x[i+1] == y[i] && string(x[i+2:]) == string(y[i+2:]):
		differ = x[i : i+2]
	case string(x[i+1:]) == string(y[i+1:]):
		differ = []byte{x[i], y[i]}
	default:
		return false
	}
	for _, d := range differ {
		if d >= '0' && d <= '9' {
			return false // DB_1 and DB_2 are two things
		}
	}
	return true
}

// near finds the pairs of a name that is read and declared nowhere, and one
// that is declared and read nowhere, one slip apart.
func near(p *rules.Pass, on *rules.On) (byRead map[string]fact.Declared, byDeclared map[string]string) {
	byRead, byDeclared = map[string]fact.Declared{}, map[string]string{}
	names, _ := reads(on)
	says := declared(p)
	for _, n := range names {
		if _, ok := says[n]; ok || known(on, n) {
			continue
		}
		for _, d := range p.Component.Declared {
			if !slip(n, d.Name) || byRead[n].Name != "" || slices.Contains(names, d.Name) || d.How == "start command" && survey.Consumed(d.Name) || survey.Ambient(d.Name) {
				continue
			}
			if survey.Mentioned(p.Tree, p.Component, d.Name) && !strings.EqualFold(strings.ReplaceAll(d.Name, "_", ""), strings.ReplaceAll(n, "_", "")) && d.How == "dotenv example" {
				continue // something else reads it
			}
			byRead[n], byDeclared[d.Name] = d, n
		}
	}
	return byRead, byDeclared
}
