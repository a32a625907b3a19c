package command

import (
	"slices"
	"strings"

	"ubique/core/value"
)

// togetherValues are the flags with values of programs that start several others
// (concurrently 9 and npm-run-all 4: their documentation).
const togetherValues = " -n --names -c --prefix-colors -p --prefix -l --prefix-length -t --timestamp-format -m --max-processes -s --success --restart-tries --restart-after --hide --cwd --kill-signal --ks --default-input-target --max-parallel --npm-path "

// maxTogether is how many programs are followed that one starts.
const maxTogether = 8

// together follows the programs that one starts beside each other, or one after the other:
// the first of the former is the one that is asked for, and the last of the latter. ok is
// false where they are named by what is not known.
func together(name string, words []Word, c Context, env []Assign, steps []value.Step, exec bool, depth int) (Final, bool) {
	scripts := name != "concurrently" // of a manifest, by their names
	beside := name != "run-s" && name != "npm-run-all"
	var all []Final
	for i := 1; i < len(words); i++ {
		w := words[i]
		if strings.HasPrefix(w.Text, "-") {
			switch {
			case name == "npm-run-all" && slices.Contains([]string{"-p", "--parallel", "-s", "--sequential", "--serial"}, w.Text):
				parallel := w.Text == "-p" || w.Text == "--parallel"
				if len(all) > 0 && beside != parallel {
					return Final{}, false // both
				}
				beside = parallel
			case strings.Contains(togetherValues, " "+w.Text+" ") && !(scripts && len(w.Text) == 2):
				i++
			}
			continue
		}
		if !w.Literal() || strings.ContainsAny(w.Text, "*{") || len(all) >= maxTogether {
			return Final{}, false
		}
		text := w.Text
		if script, ok := strings.CutPrefix(text, "npm:"); ok || scripts {
			if ok {
				text = script
			}
			text = "npm run " + text
		}
		line, err := Parse(text, w.At)
		if err != nil {
			return Final{}, false
		}
		all = append(all, follow(line, c, env, steps, depth+1))
	}
	if len(all) == 0 {
		return Final{}, false
	}
	which := 0
	if !beside {
		which = len(all) - 1
	}
	f := all[which]
	for i := range all {
		if i != which {
			all[i].Back = beside
			f.Before = append(append(f.Before[:len(f.Before):len(f.Before)], all[i].Before...), all[i])
		}
	}
	f.Holds = &Hold{"runner", name, words[0].At}
	if Lookup(name) != nil {
		f.Wrapped = append([]Via{{name, words[0].At}}, f.Wrapped...)
	}
	return f, true
}
