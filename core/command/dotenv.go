package command

import (
	"strings"

	"ubique/core/source"
)

// DotenvFile is a dotenv file of the tree whose variables a program hands to the one that
// it runs.
type DotenvFile struct {
	Path string
	Over bool // they beat those of the environment
}

// dotenv lists the files of a program that runs another one with their variables: the
// flags stand before, the command behind. What the environment has stays, but for
// python-dotenv (dotenv-cli 10, dotenv 3.1 of Ruby, env-cmd 11, and "dotenv run" of
// python-dotenv 1.1: their documentation).
func (c Context) dotenv(name string, flags, rest []Word) (files []DotenvFile, command []Word) {
	over := false
	if name == "dotenv" && len(rest) > 0 && rest[0].Text == "run" {
		over, rest = true, rest[1:]
		for len(rest) > 0 && strings.HasPrefix(rest[0].Text, "-") {
			over = over && rest[0].Text != "--no-override"
			last := rest[0].Text == "--"
			if rest = rest[1:]; last {
				break
			}
		}
	}
	var names []string
	for i := 0; i < len(flags); i++ {
		flag, v, joined := strings.Cut(flags[i].Text, "=")
		switch flag {
		case "-o", "--override", "--overload":
			over = true
		case "-e", "-f", "--file":
			if !joined && i+1 < len(flags) {
				i++
				v = flags[i].Text
			}
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
	return files, rest
}
