// Package container surveys components that are only a container file: no
// runtime that is read here has a manifest beside it.
package container

import (
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/survey"
)

// Runtime is the survey of bare container files.
type Runtime struct{}

// New makes the survey of bare container files.
func New() *Runtime { return &Runtime{} }

// Name implements survey.Runtime.
func (*Runtime) Name() string { return "container" }

// Claims implements survey.Runtime: the conductor makes these components of
// the container files that no other component has.
func (*Runtime) Claims(*source.Tree, survey.Folder) int { return 0 }

// Gather implements survey.Runtime.
func (*Runtime) Gather(_ *source.Tree, c *fact.Component, _ survey.Folder) { c.Complete = true }

// Modules implements survey.Runtime.
func (*Runtime) Modules(*source.Tree, *fact.Component, string) survey.Modules { return survey.Plain{} }

// Entry implements survey.Runtime.
func (*Runtime) Entry(*source.Tree, *fact.Component) (string, string, bool) { return "", "", false }

// Assumed implements survey.Runtime.
func (*Runtime) Assumed(*source.Tree, *fact.Component) (string, bool) { return "", false }

// Framework implements survey.Runtime.
func (*Runtime) Framework(string) string { return "" }
