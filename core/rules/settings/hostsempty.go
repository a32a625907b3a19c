package settings

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

var hostsEmpty = &rules.Rule{
	ID: "settings/hosts-empty", Level: rules.Blocker, Title: "no public host name is accepted", Doc: doc("hosts-empty"),
	Check: func(p *rules.Pass) {
		each(p, []string{"ALLOWED_HOSTS"}, func(on *rules.On, s fact.Setting) {
			if s.Framework != "Django" || s.Value.Depends() {
				return // decided by the environment
			}
			list, ok := texts(s.Value.Under(on.Ported))
			if !ok {
				return
			}
			for _, h := range list {
				switch strings.Trim(strings.ToLower(h), "[]. ") {
				case "", "localhost", "127.0.0.1", "::1", "0.0.0.0", "testserver":
				default:
					return
				}
			}
			says := "is empty"
			if len(list) > 0 {
				says = "names only this machine"
			}
			f := rules.Finding{Where: s.At, Trail: trail(s), Message: fmt.Sprintf("ALLOWED_HOSTS %s: Django answers every request under the public name with 400 Bad Request", says), Remedy: `ALLOWED_HOSTS = os.environ["ALLOWED_HOSTS"].split(",")`}
			p.Report(on, 0, f)
		})
	},
}
