// Package catalog lists the rules of every family.
package catalog

import (
	"strings"

	"ubique/core/rules"
)

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
