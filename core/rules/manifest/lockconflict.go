package manifest

import (
	"fmt"
	"path"

	"ubique/core/fact"
	"ubique/core/lock"
	"ubique/core/rules"
	"ubique/core/value"
)

var lockConflict = &rules.Rule{
	ID: "manifest/lock-conflict", Level: rules.Risk, Title: "locks of two package managers", Doc: doc("lock-conflict"),
	Check: func(p *rules.Pass) {
		c := p.Component
		if len(c.Locks) < 2 {
			return
		}
		keep := remaining(c)
		for _, l := range c.Locks {
			if l == keep || l.Manager == keep.Manager {
				continue
			}
			f := rules.Finding{
				Where:   l.Top(),
				Message: fmt.Sprintf("%s stands beside %s: two package managers, and hosts take the versions of the one that they see first", path.Base(l.File), path.Base(keep.File)),
				Trail:   []value.Step{{At: keep.Top(), Note: "the other lock"}},
				Remedy:  "git rm " + l.File,
			}
			if c.Manager == keep.Manager {
				f.Trail = append(f.Trail, value.Step{At: c.ManagerAt, Note: "says that " + fact.Label(c.Manager) + " is used"})
			}
			p.ReportAll(0, f)
		}
	},
}

// remaining is the lock that stays: of the manager that the tree names, else the
// one that satisfies the manifest where the other does not, else the one that
// is not written unasked, as npm's is.
func remaining(c *fact.Component) *lock.Lock {
	if c.Manager != "" && c.Locks[0].Manager == c.Manager {
		return c.Locks[0]
	}
	var best *lock.Lock
	worst := 0
	for _, l := range c.Locks {
		n := 2 * len(stale(c, l))
		if l.Problem != "" {
			n = 1
		}
		if l.Manager == "npm" || l.Manager == "pipenv" {
			n++
		}
		if best == nil || n < worst {
			best, worst = l, n
		}
	}
	return best
}
