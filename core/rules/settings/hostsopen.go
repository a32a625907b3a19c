package settings

import (
	"fmt"
	"slices"

	"ubique/core/fact"
	"ubique/core/rules"
)

var hostsOpen = &rules.Rule{
	ID: "settings/hosts-open", Level: rules.Risk, Title: "every host name is accepted", Doc: doc("hosts-open"),
	Check: func(p *rules.Pass) {
		each(p, []string{"ALLOWED_HOSTS", "allowed_hosts"}, func(on *rules.On, s fact.Setting) {
			list, ok := texts(s.Value.Under(on.Ported))
			if !ok || !slices.Contains(list, "*") {
				return
			}
			f := rules.Finding{Where: s.At, Trail: trail(s), Message: fmt.Sprintf("%s accepts every host name: links that the application makes can be led to another site", s.Name), Remedy: `ALLOWED_HOSTS = os.environ["ALLOWED_HOSTS"].split(",")`}
			if s.Name == "allowed_hosts" {
				f.Remedy = `allowed_hosts=["the.public.name"]`
			}
			p.Report(on, 0, f)
		})
	},
}
