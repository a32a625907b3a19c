// Package runtime holds the rules on what a tree is and where its files are.
package runtime

import "ubique/core/rules"

// Rules of the family, in order.
var Rules = []*rules.Rule{undetected, misnamed}
