package secret

import "embed"

//go:embed *.md
var docs embed.FS

func doc(name string) string {
	b, _ := docs.ReadFile(name + ".md")
	return string(b)
}
