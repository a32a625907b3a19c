package survey

import (
	"maps"
	"path"
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/value"
)

// pumaStages reads the settings of Puma that it has for each stage, config/puma/STAGE.rb,
// which count in the place of config/puma.rb (puma 5.6, lib/puma/configuration.rb,
// config_files and puma_default_options). It reports whether there are any.
func (s *Starter) pumaStages(st *fact.Start, prog *Program) bool {
	c := rubyConfigs["puma"]
	stages := map[string]string{}
	for _, e := range s.Tree.In(Join(st.Final.Dir, "config/puma")) {
		if stage, ok := strings.CutSuffix(path.Base(e.Path), ".rb"); ok && s.Tree.Has(e.Path) {
			stages[stage] = e.Path
		}
	}
	if len(stages) == 0 {
		return false
	}
	at := st.Listeners[0].At
	stage := value.Text("development", at)
	if w, ok, _ := st.Final.Flag("-e", "--environment"); ok && w.Value != nil {
		stage = w.Value
	} else {
		for _, name := range []string{"RAILS_ENV", "RACK_ENV", "APP_ENV"} {
			stage = &value.Value{Kind: value.Op, Text: "??", At: at, Kids: []*value.Value{value.Variable(name, value.ReadsNull, at), stage}}
		}
	}
	base := *st.Listeners[0]
	var list []*fact.Listener
	var more []func(value.Environ)
	take := func(p string, guard *value.Value) {
		f := prog.File(p)
		if f == nil {
			return
		}
		st.Reached = append(st.Reached, p)
		x := &rubySettings{st: st, f: f, port: c.port, bind: c.bind, base: base}
		found := false
		for _, site := range f.Calls {
			if callee := site.Node.Kid(0); callee.Is(code.Name) && site.Node.Kid(1) != nil && (callee.Name == c.port || callee.Name == c.bind) {
				l := x.listener(site, 0)
				list, found = append(list, only(l, guard)), true
			}
		}
		if found {
			more = append(more, x.more)
		} else {
			l := base
			list = append(list, only(&l, guard))
		}
	}
	other := &value.Value{Kind: value.Bool, Num: 1, At: at}
	for _, name := range slices.Sorted(maps.Keys(stages)) {
		is := &value.Value{Kind: value.Op, Text: "===", At: at, Kids: []*value.Value{stage, value.Text(name, at)}}
		take(stages[name], is)
		other = &value.Value{Kind: value.Op, Text: "&&", At: at, Kids: []*value.Value{other, {Kind: value.Op, Text: "!", At: at, Kids: []*value.Value{is}}}}
	}
	if p, ok := source.Join(st.Final.Dir, c.files[0]); ok && s.Tree.Has(p) {
		take(p, other)
	} else {
		l := base
		list = append(list, only(&l, other))
	}
	st.Listeners = list
	st.More = func(env value.Environ) {
		n := len(st.Listeners)
		for _, add := range more {
			add(env)
		}
		for _, l := range st.Listeners[n:] { // of a file whose stage it is not
			for _, m := range st.Listeners[:n] {
				if m.At == l.At && len(m.Guards) > 0 {
					only(l, m.Guards[0])
					break
				}
			}
		}
	}
	return true
}

// only lets a listener listen where a condition holds.
func only(l *fact.Listener, guard *value.Value) *fact.Listener {
	l.Guards, l.Ends = append([]*value.Value{guard}, l.Guards...), append([]bool{false}, l.Ends...)
	if follow := l.Follow; follow != nil {
		l.Follow = func(env value.Environ) (fact.Outcome, bool) {
			o := guard.Under(env)
			if yes, ok := o.Truth(false); ok && !yes {
				return fact.Outcome{Outcome: "skipped", Port: -1, Reason: "its condition does not hold"}, true
			}
			return follow(env)
		}
	}
	return l
}
