package port

import "ubique/core/rules"

var otherName = &rules.Rule{
	ID: "port/other-name", Level: rules.Blocker, Title: "the port is read from another variable than the host sets", Doc: doc("other-name"),
	Check: func(p *rules.Pass) { misnamed(p, "port/other-name") },
}
