package command

import (
	"strings"

	"ubique/core/source"
	"ubique/core/value"
)

// DotenvFile is a dotenv file of the tree whose variables a program hands to the one that
// it runs.
type DotenvFile struct {
	Path string
	Over bool // they beat those of the environment
}

// handing is how a program hands the variables of dotenv files to another one: whether
// they beat those of the environment, and the flags, between spaces, that name files, that
// set one variable, that let the files win or lose, and that name settings of its own.
type handing struct {
	over                       bool
	file, set, win, lose, ours string
	run                        handingVerb
}

// handingVerb is a word behind which the program to run stands, and what changes there.
type handingVerb struct {
	word string
	over bool
	lose string
}

// handings are those programs (dotenv-cli 10, dotenv 3.1 of Ruby, "dotenv run" of
// python-dotenv 1.1, and env-cmd 11: their documentation, 2026-11).
var handings = map[string]handing{
	"dotenv": {file: " -e -f --file ", set: " -v ", win: " -o --override --overwrite --overload ",
		run: handingVerb{"run", true, " --no-override "}},
	"env-cmd": {over: true, file: " -f --file ", lose: " --no-override ", ours: " -e --environments -r --rc-file "},
}

// dotenv lists the files and the variables of such a program: the flags stand before, the
// command behind. Why says what could not be told of them.
func (c Context) dotenv(h handing, flags, rest []Word) (files []DotenvFile, set []Assign, command []Word, why string) {
	has := func(list, flag string) bool { return strings.Contains(list, " "+flag+" ") }
	over := h.over
	if h.run.word != "" && len(rest) > 0 && rest[0].Text == h.run.word {
		over, rest = h.run.over, rest[1:]
		for len(rest) > 0 && strings.HasPrefix(rest[0].Text, "-") {
			over = over && !has(h.run.lose, rest[0].Text)
			last := rest[0].Text == "--"
			if rest = rest[1:]; last {
				break
			}
		}
	}
	var names []string
	for i := 0; i < len(flags); i++ {
		flag, v, joined := strings.Cut(flags[i].Text, "=")
		at := flags[i].At
		if !joined && (has(h.file, flag) || has(h.set, flag)) && i+1 < len(flags) {
			i++
			v, at = flags[i].Text, flags[i].At
		}
		switch {
		case has(h.win, flag):
			over = true
		case has(h.lose, flag):
			over = false
		case has(h.ours, flag):
			return nil, nil, rest, "the settings that " + flag + " names"
		case has(h.set, flag):
			if k, v, ok := strings.Cut(v, "="); ok {
				set = append(set, Assign{Name: k, Value: value.Text(v, at), At: at})
			}
		case has(h.file, flag):
			names = append(names, strings.Split(v, ",")...)
		}
	}
	if len(names) == 0 {
		names = []string{".env"}
	}
	for _, n := range names {
		if p, ok := source.Join(c.Dir, n); ok {
			files = append(files, DotenvFile{p, over})
		}
	}
	return files, set, rest, ""
}
