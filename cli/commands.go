package cli

import (
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"ubique/cli/render"
	"ubique/core/check"
	"ubique/core/host"
	"ubique/core/rules/catalog"
	"ubique/demo"
)

// day is the day of the report: that of --today, else today.
func (a *app) day() string {
	if a.today != "" {
		return a.today
	}
	return time.Now().Format(time.DateOnly)
}

// todayFlag adds --today.
func (a *app) todayFlag(c *cobra.Command) {
	c.Flags().StringVar(&a.today, "today", "", "judge support of versions as on this day, `YYYY-MM-DD`, for runs that repeat")
}

func (a *app) check() *cobra.Command {
	c := &cobra.Command{
		Use:   "check [PATH]",
		Short: "What would go wrong, in the order in which you would meet it",
		Long: `Checks a tree against the hosts it may be put on and shows each finding with
its line, the steps that lead there, and what to write instead.

A blocker keeps it from coming up or from being reached; a risk comes up and
then hurts; advice is worth a minute. The exit status is 1 when anything at or
above --fail-at was found, 0 when not, 2 for a wrong call, 3 for a tree that
could not be read.`,
		Example: `  ubique check
  ubique check services/bookings --on pushed
  ubique check --format sarif > ubique.sarif`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			r, at, err := a.run(args, true)
			if err != nil {
				return err
			}
			a.judge(r, at)
			return a.show(r, func() error { return render.Check(a.out, a.view(), r) })
		},
	}
	a.formatFlag(c, "text", "json", "sarif")
	a.onFlag(c)
	a.todayFlag(c)
	c.Flags().StringVar(&a.failAt, "fail-at", "", "the level from which on the exit status is 1: advice, risk, `blocker` or never")
	return c
}

// show prints a report in the form that was asked for.
func (a *app) show(r *check.Report, text func() error) error {
	switch a.format {
	case "json":
		return render.JSON(a.out, Version, r)
	case "sarif":
		return render.SARIF(a.out, Version, r)
	}
	return text()
}

func (a *app) survey() *cobra.Command {
	c := &cobra.Command{
		Use:   "survey [PATH]",
		Short: "What is here: components, versions, start commands, listeners, variables",
		Long: `Shows what Ubique reads in a tree, without judging it: the components, which
versions are asked for, the manifests, how each component starts and where it
listens, the variables it reads, and what reaches a host.

With --with the listeners are evaluated under an environment: where will the
process really listen? A variable that is not named is not set.`,
		Example: `  ubique survey
  ubique survey --with PORT=5123
  ubique survey services/bookings --with PORT=5123 --with NODE_ENV=production`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			r, _, err := a.run(args, false)
			if err != nil {
				return err
			}
			return a.show(r, func() error { return render.Survey(a.out, a.view(), r) })
		},
	}
	a.formatFlag(c, "text", "json")
	a.todayFlag(c)
	c.Flags().StringArrayVar(&a.with, "with", nil, "set a variable for the listeners: `NAME=VALUE`, as often as needed")
	return c
}

func (a *app) matrix() *cobra.Command {
	c := &cobra.Command{
		Use:   "matrix [PATH]",
		Short: "Components by hosts, with a verdict for each",
		Long: `Shows which component is ready for which host. The verdicts: ready, at risk,
blocked, unknown (something could not be told) and not applicable. Below the
table stands the worst reason for each that is not ready.`,
		Example: `  ubique matrix
  ubique matrix --on pushed,image`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			r, at, err := a.run(args, true)
			if err != nil {
				return err
			}
			a.judge(r, at)
			return a.show(r, func() error { return render.Matrix(a.out, a.view(), r) })
		},
	}
	a.formatFlag(c, "text", "json")
	a.onFlag(c)
	a.todayFlag(c)
	c.Flags().StringVar(&a.failAt, "fail-at", "", "the level from which on the exit status is 1: advice, risk, `blocker` or never")
	return c
}

func (a *app) rules() *cobra.Command {
	c := &cobra.Command{
		Use:   "rules [ID]",
		Short: "The rules, or one of them explained",
		Example: `  ubique rules
  ubique rules port            # a family
  ubique rules port/loopback   # one rule: why, a bad and a good example`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			if len(args) == 0 {
				return render.Rules(a.out, a.view(), catalog.All())
			}
			list := catalog.Find(args[0])
			if len(list) == 0 {
				return usage("there is no rule or family named %s; ubique rules lists them", args[0])
			}
			if len(list) > 1 {
				return render.Rules(a.out, a.view(), list)
			}
			return render.Rule(a.out, a.view(), list[0])
		},
		ValidArgsFunction: func(*cobra.Command, []string, string) ([]string, cobra.ShellCompDirective) {
			var ids []string
			for _, r := range catalog.All() {
				ids = append(ids, r.ID+"\t"+r.Title)
			}
			return ids, cobra.ShellCompDirectiveNoFileComp
		},
	}
	return c
}

func (a *app) hosts() *cobra.Command {
	c := &cobra.Command{
		Use:   "hosts [NAME]",
		Short: "The hosts that a tree is checked against, or one explained",
		Long: `Lists the kinds of hosts that ship with Ubique and the hosts of your own that
ubique.yaml names under host-files. Each is a contract in YAML: what the host
receives, how it starts a component, which port it gives, what it sets.`,
		Example: `  ubique hosts
  ubique hosts pushed`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			s, err := a.configure(a.path(nil))
			if err != nil {
				return err
			}
			list, err := check.Hosts(s.files)
			if err != nil {
				return failure{statusUsage, err}
			}
			if len(args) == 0 {
				return render.Hosts(a.out, a.view(), list)
			}
			i := slices.IndexFunc(list, func(h *host.Contract) bool { return h.Name == args[0] })
			if i < 0 {
				return usage("there is no host named %s; ubique hosts lists them", args[0])
			}
			return render.Host(a.out, a.view(), list[i])
		},
	}
	return c
}

func (a *app) demo() *cobra.Command {
	c := &cobra.Command{
		Use:   "demo [DIR]",
		Short: "Writes the demo tree, the services of a small observatory, and checks it",
		Long: `Writes the demo tree to a new folder (or to DIR, which must not exist or be
empty) and checks it. It holds the services of a small observatory that opens
its dome to the public on clear nights; some are troubled, some are sound.`,
		Example: `  ubique demo
  ubique demo observatory`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			dir := ""
			if len(args) > 0 {
				dir = a.path(args)
				if list, err := os.ReadDir(dir); err == nil && len(list) > 0 {
					return usage("%s is not empty; name a folder that does not exist", dir)
				}
			} else {
				made, err := os.MkdirTemp("", "ubique-demo-")
				if err != nil {
					return notRead(fmt.Errorf("making a folder for the demo: %w", err))
				}
				dir = filepath.Join(made, "observatory")
			}
			if err := demo.Write(dir); err != nil {
				return notRead(err)
			}
			r, _, err := a.run([]string{absolute(dir)}, true)
			if err != nil {
				return err
			}
			if err := render.Check(a.out, a.view(), r); err != nil {
				return err
			}
			return render.DemoEnd(a.out, a.view(), dir)
		},
	}
	return c
}

func absolute(dir string) string {
	if abs, err := filepath.Abs(dir); err == nil {
		return abs
	}
	return dir
}

func (a *app) version() *cobra.Command {
	return &cobra.Command{
		Use:     "version",
		Short:   "The version of this program",
		Example: "  ubique version",
		Args:    cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			_, err := fmt.Fprintf(a.out, "ubique %s %s/%s %s\n", Version, runtime.GOOS, runtime.GOARCH, strings.TrimPrefix(runtime.Version(), "go"))
			return err
		},
	}
}
