package survey

import (
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/version"
)

// Ranks of pins: how far they stand from the source code (design §7.1).
const (
	RankManifest = 1
	RankFile     = 2
	RankImage    = 3
	RankCI       = 4
)

// form is how one kind of file has its version read.
type form struct {
	read    func(string) (version.Set, bool)
	words   string // words that stand for a version and that the reader knows, between spaces
	lower   bool   // a constraint of the source, not a choice
	prefix  string // text that may stand before the version
	strict  bool   // the prefix must be there
	example string // how it is written, with V for the version
	foreign string // what begins so names another implementation, between spaces
}

// forms are the sources of versions by the name that reports show. Source:
// the documentation of what reads each, 2026-11.
var forms = map[string]form{
	"engines":               {read: version.NPM, example: `"node": "V.x"`},
	"devEngines":            {read: version.NPM, example: `"version": "V.x"`},
	"volta":                 {read: version.NPM, example: `"V.0.0"`},
	".nvmrc":                {read: version.Prefix, words: " lts/* node system unstable lts current default ", example: "V", foreign: "lts/ iojs"},
	".node-version":         {read: version.Prefix, words: " current ", example: "V"},
	".tool-versions":        {read: version.Prefix, words: " system lts ", example: "V", foreign: "ref: path: pypy jruby temurin zulu corretto graalvm liberica"},
	"mise":                  {read: version.Prefix, words: " system lts ", example: "V", foreign: "ref: path: prefix: sub- pypy jruby temurin zulu graalvm liberica openjdk"},
	".python-version":       {read: version.Prefix, words: " system ", prefix: "python-", example: "V", foreign: "pypy miniconda miniforge anaconda graalpy stackless cpython jython micropython"},
	"runtime.txt":           {read: version.Prefix, prefix: "python-", strict: true, example: "python-V"},
	"requires-python":       {read: version.PEP440, example: `requires-python = "~=V.0"`},
	"poetry python":         {read: version.PEP440, example: `python = "~V"`},
	"Pipfile":               {read: version.Prefix, example: `python_version = "V"`},
	".ruby-version":         {read: version.Prefix, words: " system ", prefix: "ruby-", example: "V", foreign: "jruby truffleruby rbx mruby ree"},
	"Gemfile":               {read: version.Gem, prefix: "ruby-", example: `ruby "~> V.0"`},
	"Gemfile.lock":          {read: version.Prefix, prefix: "ruby ", example: "V"},
	".java-version":         {read: version.Java, words: " system ", example: "V"},
	".sdkmanrc":             {read: version.Java, example: "java=V-tem"},
	"java.version":          {read: atLeastJava, lower: true, example: "<java.version>V</java.version>"},
	"compiler release":      {read: atLeastJava, lower: true, example: "V"},
	"toolchain":             {read: version.Java, example: "JavaLanguageVersion.of(V)"},
	".go-version":           {read: version.Go, prefix: "go", example: "V.0"},
	"go.mod":                {read: version.AtLeast, lower: true, example: "go V"},
	"go toolchain":          {read: version.AtLeast, lower: true, words: " default local ", prefix: "go", example: "toolchain goV.0"},
	"composer require":      {read: version.Composer, example: `"php": "~V.0"`},
	"composer platform":     {read: version.Prefix, example: `"php": "V.0"`},
	".php-version":          {read: version.Prefix, example: "V"},
	"global.json":           {read: sdk, example: `"version": "V.100"`},
	"TargetFramework":       {read: version.TFM, example: "<TargetFramework>netV</TargetFramework>"},
	"rust-toolchain":        {read: version.Prefix, words: " nightly beta ", example: `channel = "V"`, foreign: "nightly- beta- stable-"},
	"rust-version":          {read: version.AtLeast, lower: true, example: `rust-version = "V"`},
	"mix.exs":               {read: version.Elixir, lower: true, example: `elixir: "~> V"`},
	".exenv-version":        {read: version.Prefix, example: "V"},
	"elixir version":        {read: version.Prefix, words: " system ", example: "elixir V.0", foreign: "ref: path: main"},
	".deno-version":         {read: version.Prefix, prefix: "v", example: "V"},
	".bun-version":          {read: version.Prefix, prefix: "v", example: "V.0.0"},
	"packageManager":        {read: version.NPM, example: `"V"`},
	"CI":                    {read: ciVersion, words: " lts/* lts lts/-1 current node pre ", example: `"V"`, foreign: "pypy graalpy miniforge miniconda nightly ${{ $ truffleruby jruby head canary temurin"},
	"engines of a manager":  {read: version.NPM, example: `"V.x"`},
	"an image's CI version": {read: version.Prefix, example: "V"},
}

// atLeastJava: classes for one version of Java run on all later ones.
func atLeastJava(s string) (version.Set, bool) {
	set, ok := version.Java(s)
	if !ok {
		return set, false
	}
	v, n := s, strings.TrimPrefix(strings.TrimSpace(s), "1.")
	if strings.HasPrefix(strings.TrimSpace(v), "1.") {
		v = n
	}
	return version.AtLeast(v)
}

// sdk reads the version of an SDK of .NET: 8.0.404 makes programs for 8.0.
func sdk(s string) (version.Set, bool) {
	f := strings.Split(strings.TrimSpace(s), ".")
	if len(f) < 3 || strings.Trim(f[0]+f[1], "0123456789") != "" {
		return version.Set{}, false
	}
	return version.Prefix(f[0] + "." + f[1])
}

func ciVersion(s string) (version.Set, bool) {
	if set, ok := version.Prefix(strings.TrimPrefix(s, "~")); ok {
		return set, true
	}
	if strings.HasPrefix(s, "net") {
		return version.TFM(s)
	}
	return version.NPM(s)
}

// releaseNames are the names of release lines of Node.js that nvm and its like
// know (github.com/nodejs/Release, read 2026-11).
var releaseNames = map[string]string{
	"argon": "4", "boron": "6", "carbon": "8", "dubnium": "10", "erbium": "12", "fermium": "14", "gallium": "16", "hydrogen": "18", "iron": "20", "jod": "22", "krypton": "24",
}

// ReadPin makes a pin of what a file says, with what is wrong with its form.
func ReadPin(what, from, text string, rank int, at place.Span) fact.Pin {
	p := fact.Pin{What: what, Text: text, From: from, Rank: rank, At: at}
	f, ok := forms[from]
	if !ok {
		f = forms["an image's CI version"]
	}
	p.Lower = f.lower
	s := strings.TrimSpace(text)
	low := strings.ToLower(s)
	p.Form = f.example
	switch {
	case low == "*" || low == "x" || low == "latest" || low == "stable" || s == "" && (from == "engines" || from == "requires-python"):
		p.Alias = true
		return p
	case strings.Contains(f.words, " "+s+" "):
		p.Alias = true
		return p
	}
	if name, ok := strings.CutPrefix(low, "lts/"); ok && what == "node" {
		line := releaseNames[name]
		switch {
		case from != ".nvmrc" && from != "CI":
			p.Wrong = "only nvm and its like know the name " + s + "; what reads " + from + " wants a number"
		case line != "":
			p.Set, p.Known = version.Prefix(line)
		case name == "*" || strings.HasPrefix(name, "-"):
			p.Alias = true
		default:
			p.Wrong = "no release of Node.js has the name " + s[4:]
		}
		return p
	}
	if line := releaseNames[low]; line != "" && what == "node" {
		p.Wrong = s + " is the name of a release line, and a number is wanted"
		p.Set, p.Known = version.Prefix(line)
		p.Known = false
		return p
	}
	for _, w := range strings.Fields(f.foreign) {
		if strings.HasPrefix(s, w) || w == "$" && strings.Contains(s, "$") {
			return p // another implementation or a reference: not read
		}
	}
	rest, cut := strings.CutPrefix(s, f.prefix)
	if f.prefix != "" && !cut {
		if strings.HasPrefix(low, strings.ToLower(f.prefix)) {
			p.Wrong = "letter case counts: " + f.prefix + ", not " + s[:len(f.prefix)]
			return p
		}
		if f.strict {
			p.Wrong = "the version must follow " + f.prefix
			return p
		}
	}
	if f.strict && (rest == "" || rest[0] < '0' || rest[0] > '9') {
		p.Wrong = "a number must follow " + f.prefix + " at once"
		return p
	}
	p.Set, p.Known = f.read(rest)
	if bare := (rank == RankFile) && what != "java"; p.Known && bare {
		switch {
		case strings.HasPrefix(rest, "v") && what != "node" && from != ".deno-version" && from != ".bun-version":
			p.Wrong, p.Known = "a v before the number is not read", false
		case strings.ContainsAny(rest, "xX*"):
			p.Wrong, p.Known = "a plain number is wanted, without "+rest[strings.IndexAny(rest, "xX*"):], false
		}
	}
	if !p.Known && p.Wrong == "" {
		switch {
		case strings.ContainsAny(s, "${}"):
			return p // made by something else
		case strings.ContainsAny(s, " \t") && rank == RankFile:
			p.Wrong = "there is a space in it, and a version alone is wanted"
		case strings.ContainsAny(s, "<>=~^") && rank == RankFile:
			p.Wrong = "a range is not read here, a version is"
		case s != "" && s[0] >= 'A' && s[0] <= 'Z':
			p.Wrong = "it begins with a capital letter, and what reads it wants the version"
		default:
			p.Wrong = "it is not a version in the form that is read here"
		}
	}
	if p.Known && (from == "requires-python" || from == "poetry python") && !p.Set.Bounded() {
		p.Lower = true // what the code needs; packaging tools ask for one, and few have more
	}
	if p.Known && p.Set.Empty() {
		p.Wrong, p.Known = "no version satisfies it", false
	}
	return p
}

// tools are the names that version managers of many tools use for a runtime
// (their registries of plugins, read 2026-11).
var tools = map[string][]string{
	"node": {"nodejs", "node"}, "python": {"python"}, "ruby": {"ruby"}, "java": {"java"}, "go": {"golang", "go"}, "php": {"php"}, "dotnet": {"dotnet", "dotnet-core"},
	"rust": {"rust"}, "elixir": {"elixir"}, "erlang": {"erlang"}, "deno": {"deno"}, "bun": {"bun"},
}

// versionFileOf are the files that hold the version of one runtime alone.
var versionFileOf = map[string][]string{
	"node": {".nvmrc", ".node-version"}, "python": {".python-version", "runtime.txt"}, "ruby": {".ruby-version"}, "java": {".java-version"}, "go": {".go-version"},
	"php": {".php-version"}, "elixir": {".exenv-version"}, "deno": {".deno-version"}, "bun": {".bun-version"},
}

// PinFiles lists the names of files that may pin a runtime, for messages.
func PinFiles(what string) []string {
	return append(append([]string(nil), versionFileOf[what]...), ".tool-versions", "mise.toml")
}

// FilePins reads the version files of a runtime: those of its own, and those
// that version managers of many tools read, in the component's folder or the
// nearest above it.
func FilePins(t *source.Tree, dir, what string) []fact.Pin {
	var list []fact.Pin
	for _, name := range versionFileOf[what] {
		nearest(t, dir, name, func(p string, f *source.File) {
			lines := document.PlainLines(p, f.Data, f.Lines())
			if len(lines) == 0 {
				return
			}
			l := lines[0]
			if name == "runtime.txt" && otherRuntime(l.Text) {
				return
			}
			list = append(list, ReadPin(what, name, l.Text, RankFile, l.At))
		})
	}
	names := tools[what]
	nearest(t, dir, ".tool-versions", func(p string, f *source.File) {
		for _, l := range document.PlainLines(p, f.Data, f.Lines()) {
			fields := strings.Fields(l.Text)
			if len(fields) < 2 || !contains(names, fields[0]) {
				continue
			}
			at := l.At
			at.Col += strings.Index(l.Text[len(fields[0]):], fields[1]) + len(fields[0])
			at.EndCol = at.Col + len(fields[1])
			list = append(list, ReadPin(what, formOfTool(what, ".tool-versions"), fields[1], RankFile, at))
		}
	})
	for _, name := range []string{"mise.toml", ".mise.toml", "mise/config.toml", ".config/mise.toml"} {
		nearest(t, dir, name, func(p string, f *source.File) {
			d, err := document.TOML(p, f.Data, f.Lines())
			if err != nil {
				return
			}
			for _, n := range names {
				v := d.Get("tools", n)
				if v != nil && v.Kind == document.Map {
					v = v.Get("version")
				}
				if v != nil && v.Kind == document.List && len(v.Kids) > 0 {
					v = v.Kids[0]
				}
				if v.Str() != "" {
					list = append(list, ReadPin(what, formOfTool(what, "mise"), v.Text, RankFile, inside(v.At())))
				}
			}
		})
	}
	if what == "java" {
		nearest(t, dir, ".sdkmanrc", func(p string, f *source.File) {
			if v := document.INI(p, f.Data, f.Lines()).Get("java"); v != nil {
				list = append(list, ReadPin(what, ".sdkmanrc", v.Text, RankFile, v.At()))
			}
		})
	}
	return list
}

// formOfTool picks the form in which a version manager has the versions of a
// runtime.
func formOfTool(what, from string) string {
	switch what {
	case "java":
		return ".sdkmanrc"
	case "elixir":
		return "elixir version"
	}
	return from
}

func otherRuntime(s string) bool {
	s = strings.ToLower(s)
	for _, other := range []string{"ruby", "node", "java", "php", "go-", "go1", "deno", "pypy", "nodejs", "scala"} {
		if strings.HasPrefix(s, other) {
			return true
		}
	}
	return false
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

// inside takes the quotes off the place of a string.
func inside(s place.Span) place.Span {
	s.Col++
	s.EndCol--
	return s
}

// nearest reads a file of a name in a folder or the nearest folder above it.
func nearest(t *source.Tree, dir, name string, read func(p string, f *source.File)) {
	for d := dir; ; d = source.Dir(d) {
		if p := join(d, name); t.Has(p) {
			if f, err := t.Code(p); err == nil {
				read(p, f)
			}
			return
		}
		if d == "" {
			return
		}
	}
}

// ImageProducts are the runtimes that a container base brings, by the last
// part of the image's name (the images' own pages, read 2026-11).
var imageProducts = map[string]string{
	"node": "node", "python": "python", "ruby": "ruby", "golang": "go", "php": "php", "rust": "rust", "elixir": "elixir", "erlang": "erlang", "deno": "deno", "bun": "bun",
	"openjdk": "java", "eclipse-temurin": "java", "amazoncorretto": "java", "zulu-openjdk": "java", "liberica-openjdk-debian": "java", "liberica-openjdk-alpine": "java", "sapmachine": "java", "java": "java", "maven": "java", "gradle": "java",
	"aspnet": "dotnet", "sdk": "dotnet", "runtime": "dotnet", "runtime-deps": "dotnet", "pypy": "", "alpine": "", "debian": "", "ubuntu": "",
}

// Product gives the runtime that a base image brings; empty for none.
func Product(image string) string { return imageProducts[path.Base(image)] }

// BaseTag reads the tag of a base image. The images of build tools have the
// version of Java after their own: 3.9-eclipse-temurin-21, 8.10-jdk21.
func BaseTag(b fact.Base) version.Image {
	name := path.Base(b.Name)
	im := version.Tag(name, b.Tag)
	if name == "maven" || name == "gradle" {
		im.Set, im.Known = version.Set{}, false
		for _, w := range strings.Split(b.Tag, "-")[min(1, strings.Count(b.Tag, "-")):] {
			w = strings.TrimPrefix(strings.TrimPrefix(w, "jdk"), "jre")
			if s, ok := version.Prefix(w); ok {
				im.Set, im.Known = s, true
			}
		}
	}
	if Product(b.Name) == "java" && im.Known && strings.HasPrefix(b.Tag, "8u") {
		im.Set, im.Known = version.Prefix("8")
	}
	return im
}

// BasePins takes the bases of a container for pins of a runtime. Where the
// last stage brings the runtime, only that one runs the program.
func BasePins(im *fact.Image, runtime string) []fact.Pin {
	last := false
	for _, b := range im.Bases {
		last = last || b.Final && Product(b.Name) == runtime
	}
	var list []fact.Pin
	for _, b := range im.Bases {
		if Product(b.Name) != runtime || b.Unknown || b.Tag == "" || last && !b.Final {
			continue
		}
		tag := BaseTag(b)
		list = append(list, fact.Pin{What: runtime, Text: b.Tag, From: "container base", Rank: RankImage, At: b.At, Set: tag.Set, Known: tag.Known, Alias: !tag.Known})
	}
	return list
}

// Say puts in words how a pin stands on a day: whether what it leads to is
// still supported.
func Say(p fact.Pin, today string) string {
	switch {
	case p.Wrong != "":
		return "not read: " + p.Wrong
	case p.Alias:
		return "moves: the newest that there is"
	case !p.Known:
		return "not compared"
	case p.Lower:
		return "a lower bound"
	case !p.Set.Bounded():
		return "no upper end"
	}
	l, ok := version.NewestLine(p.What, p.Set, today)
	if !ok {
		return ""
	}
	switch l.Stands(today) {
	case version.Ended:
		return "support of " + l.Name + " ended " + l.Ends
	case version.Ending:
		return "support of " + l.Name + " ends soon, " + l.Ends
	}
	if l.Ends == "" {
		return "supported"
	}
	return "supported until " + l.Ends
}
