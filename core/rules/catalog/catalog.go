// Package catalog lists the rules of every family.
package catalog

import (
	"slices"
	"strings"

	"ubique/core/rules"
	"ubique/core/rules/descriptor"
	"ubique/core/rules/manifest"
	"ubique/core/rules/pin"
	"ubique/core/rules/port"
	"ubique/core/rules/runtime"
	"ubique/core/rules/secret"
	"ubique/core/rules/settings"
	"ubique/core/rules/ship"
	"ubique/core/rules/start"
)

// All gives every rule, family by family in the order of a developer's work.
func All() []*rules.Rule {
	return slices.Concat(runtime.Rules, pin.Rules, manifest.Rules, ship.Rules, start.Rules, port.Rules, secret.Rules, settings.Rules, descriptor.Rules)
}

// Find gives a rule by its ID, or every rule of a family by its name.
func Find(id string) []*rules.Rule {
	var list []*rules.Rule
	for _, r := range All() {
		if strings.EqualFold(r.ID, id) || strings.EqualFold(r.Family(), id) {
			list = append(list, r)
		}
	}
	return list
}
