// Package cli is the command line: flags in, one call of the core, a view
// out. It computes nothing.
package cli

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"runtime/debug"
	"slices"
	"strings"
	"time"

	"github.com/muesli/termenv"
	"github.com/spf13/cobra"

	"ubique/cli/render"
	"ubique/core/check"
	"ubique/core/document"
	"ubique/core/host"
	"ubique/core/place"
	"ubique/core/rules"
)

// Version is the version of the program.
const Version = "0.1.0"

// Exit statuses (design §8).
const (
	statusClean   = 0
	statusFound   = 1
	statusUsage   = 2
	statusNotRead = 3
)

// failure is an error with the exit status that it leads to.
type failure struct {
	status int
	err    error
}

func (f failure) Error() string { return f.err.Error() }
func (f failure) Unwrap() error { return f.err }

func usage(format string, a ...any) error { return failure{statusUsage, fmt.Errorf(format, a...)} }
func notRead(err error) error             { return failure{statusNotRead, err} }

// app is one run of the program.
type app struct {
	in       io.Reader
	out, err io.Writer
	dir      string
	color    string
	format   string
	on       []string
	failAt   string
	today    string
	config   string
	with     []string
	status   int
}

// Main runs the program and gives its exit status.
func Main(args []string, in io.Reader, out, errOut io.Writer) int {
	// A run is short: most end before the first collection would pay off. The
	// limit keeps the peak within the budget (design §9).
	debug.SetGCPercent(400)
	debug.SetMemoryLimit(80 << 20)
	a := &app{in: in, out: out, err: errOut}
	root := a.root()
	root.SetArgs(args)
	root.SetOut(out)
	root.SetErr(errOut)
	if err := root.Execute(); err != nil {
		fmt.Fprintf(errOut, "ubique: %s\n", render.Clean(err.Error()))
		var f failure
		if errors.As(err, &f) {
			return f.status
		}
		fmt.Fprintln(errOut, "        ubique --help lists the commands; ubique COMMAND --help its flags")
		return statusUsage
	}
	return a.status
}

func (a *app) root() *cobra.Command {
	root := &cobra.Command{
		Use:   "ubique",
		Short: "Will this source come up where you host it? Ubique reads it and says which line would stop it",
		Long: `Ubique reads the source of an application before it is hosted. It finds what
can be deployed, follows the start command to the program that runs, works out
where that will listen, and names the line that would make a host fail.

It runs nothing from the tree, writes nothing and uses no network.`,
		Example: `  ubique demo                 # a troubled tree to try it on, checked
  ubique check                # what would go wrong with the tree here
  ubique survey --with PORT=5123
  ubique rules port/loopback  # one rule explained`,
		SilenceUsage:      true,
		SilenceErrors:     true,
		CompletionOptions: cobra.CompletionOptions{HiddenDefaultCmd: false},
	}
	root.PersistentFlags().StringVarP(&a.dir, "directory", "C", "", "work as if started in `DIR`")
	root.PersistentFlags().StringVar(&a.color, "color", "auto", "colour the text: `auto`, always or never (NO_COLOR is honoured)")
	root.PersistentFlags().StringVar(&a.config, "config", "", "the configuration `FILE` (else ubique.yaml in the tree, where there is one)")
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return usage("%w", err) })
	root.PersistentPreRunE = func(*cobra.Command, []string) error {
		if !slices.Contains([]string{"auto", "always", "never"}, a.color) {
			return usage("--color %s: it is auto, always or never", a.color)
		}
		return nil
	}
	root.AddCommand(a.check(), a.survey(), a.matrix(), a.rules(), a.hosts(), a.demo(), a.version())
	return root
}

func (a *app) formatFlag(c *cobra.Command, formats ...string) {
	c.Flags().StringVar(&a.format, "format", "text", "the form of the report: "+strings.Join(formats, ", "))
	c.PreRunE = func(*cobra.Command, []string) error {
		if !slices.Contains(formats, a.format) {
			return usage("--format %s: it is one of %s", a.format, strings.Join(formats, ", "))
		}
		return nil
	}
	_ = c.RegisterFlagCompletionFunc("format", cobra.FixedCompletions(formats, cobra.ShellCompDirectiveNoFileComp))
}

func (a *app) onFlag(c *cobra.Command) {
	c.Flags().StringSliceVar(&a.on, "on", nil, "only these `HOSTS`, by name (ubique hosts lists them)")
	_ = c.RegisterFlagCompletionFunc("on", func(*cobra.Command, []string, string) ([]string, cobra.ShellCompDirective) {
		kinds, _ := host.Kinds()
		var names []string
		for _, k := range kinds {
			names = append(names, k.Name+"\t"+k.Title)
		}
		return names, cobra.ShellCompDirectiveNoFileComp
	})
}

// path is the folder to look at: the argument, seen from -C.
func (a *app) path(args []string) string {
	p := "."
	if len(args) > 0 {
		p = args[0]
	}
	if a.dir != "" && !filepath.IsAbs(p) {
		p = filepath.Join(a.dir, p)
	}
	return p
}

// settings is what ubique.yaml says.
type settings struct {
	hosts  []string // names of the hosts that matter
	files  []string // files of hosts of one's own
	accept []check.Accept
	failAt string
}

// configure reads the configuration. Its keys: hosts, host-files, fail-at and
// accept (a list of rule, file, reason, until).
func (a *app) configure(tree string) (settings, error) {
	var s settings
	name := a.config
	if name == "" {
		name = filepath.Join(tree, "ubique.yaml")
		if info, err := os.Lstat(name); err != nil || !info.Mode().IsRegular() {
			return s, nil
		}
	}
	data, err := os.ReadFile(name)
	if err != nil {
		return s, usage("reading the configuration: %w", err)
	}
	docs, err := document.YAML(name, data, place.NewLines(data))
	if err != nil {
		return s, failure{statusUsage, err}
	}
	if len(docs) == 0 {
		return s, nil
	}
	for _, k := range docs[0].Items() {
		switch k.Key {
		case "hosts":
			for _, h := range k.Items() {
				s.hosts = append(s.hosts, h.Text)
			}
		case "host-files":
			for _, f := range k.Items() {
				s.files = append(s.files, filepath.Join(filepath.Dir(name), f.Text))
			}
		case "fail-at":
			s.failAt = k.Text
		case "accept":
			for _, x := range k.Items() {
				acc := check.Accept{Rule: x.Get("rule").Str(), File: x.Get("file").Str(), Reason: x.Get("reason").Str()}
				if u, ok := x.Get("until").Scalar(); ok {
					acc.Until = u
				}
				if acc.Rule == "" || acc.Reason == "" {
					return s, usage("%s: an accepted finding has at least a rule and a reason", x.At())
				}
				if acc.Until != "" && acc.Until < a.day() {
					continue // it is over
				}
				s.accept = append(s.accept, acc)
			}
		default:
			return s, usage("%s: %s is not known here; known are hosts, host-files, fail-at, accept", k.KeyAt(), k.Key)
		}
	}
	return s, nil
}

// run makes the report of a tree.
func (a *app) run(args []string, judge bool) (*check.Report, rules.Level, error) {
	dir := a.path(args)
	s, err := a.configure(dir)
	if err != nil {
		return nil, 0, err
	}
	hosts, err := check.Hosts(s.files)
	if err != nil {
		return nil, 0, failure{statusUsage, err}
	}
	on := a.on
	if len(on) == 0 {
		on = s.hosts
	}
	for _, name := range on {
		if !slices.ContainsFunc(hosts, func(h *host.Contract) bool { return h.Name == name }) {
			var names []string
			for _, h := range hosts {
				names = append(names, h.Name)
			}
			return nil, 0, usage("there is no host named %s; there are %s", name, strings.Join(names, ", "))
		}
	}
	failAt := a.failAt
	if failAt == "" {
		failAt = s.failAt
	}
	if failAt == "" {
		failAt = "blocker"
	}
	level, ok := rules.ParseLevel(failAt)
	if !ok && failAt != "never" {
		return nil, 0, usage("--fail-at %s: it is advice, risk, blocker or never", failAt)
	}
	if failAt == "never" {
		level = rules.Blocker + 1
	}
	if _, err := time.Parse(time.DateOnly, a.day()); err != nil {
		return nil, 0, usage("--today %s: it is a day, written YYYY-MM-DD", a.today)
	}
	with, err := environment(a.with)
	if err != nil {
		return nil, 0, err
	}
	r, err := check.Run(check.Options{Dir: dir, Hosts: hosts, On: on, With: with, Rules: judge, Deal: s.accept, Today: a.day()})
	if err != nil {
		return nil, 0, notRead(err)
	}
	return r, level, nil
}

func environment(list []string) (map[string]string, error) {
	if list == nil {
		return nil, nil
	}
	m := map[string]string{}
	for _, x := range list {
		k, v, ok := strings.Cut(x, "=")
		if !ok || k == "" {
			if x == "" {
				continue
			}
			return nil, usage("--with %s: it is NAME=VALUE", x)
		}
		m[k] = v
	}
	return m, nil
}

// view is how text is to look on this output.
func (a *app) view() render.View {
	v := render.View{Width: 100, Version: Version}
	switch a.color {
	case "always":
		v.Color = true
	case "auto":
		if f, ok := a.out.(*os.File); ok {
			v.Color = os.Getenv("NO_COLOR") == "" && termenv.NewOutput(f).ColorProfile() != termenv.Ascii
		}
	}
	return v
}

// judge sets the exit status from the findings.
func (a *app) judge(r *check.Report, at rules.Level) {
	if r.Worst() >= at {
		a.status = statusFound
	}
}
