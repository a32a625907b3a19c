package check_test

import "testing"

const roles = `-- package.json --
{"name":"dome","version":"1.0.0","private":true}
-- Procfile --
web: node index.js
worker: ROLE=worker node index.js
-- index.js --
const http = require("http");
const services = [{ port: process.env.PORT || 3000, host: "0.0.0.0" }];
if (process.env.ADMIN) services.push({ port: 9402, host: "127.0.0.1" });
function web() {
  for (const { port, host } of services) http.createServer().listen(port, host);
}
function worker() { setInterval(() => {}, 1000); }
const roles = { web, worker };
roles[process.env.ROLE || "web"]();
`

// TestRoles surveys a program that its start command makes one of two: the
// worker never listens, the server does so for each of its services.
func TestRoles(t *testing.T) {
	t.Parallel()
	dir := plant(t, roles)
	for _, c := range []struct {
		admin string
		want  []string
	}{{"", []string{"any 5123"}}, {"1", []string{"any 5123", "loopback 9402"}}} {
		for _, s := range run(t, dir, map[string]string{"PORT": "5123", "ADMIN": c.admin}).Components[0].Starts {
			var got []string
			for _, l := range s.Listeners {
				if l.View.Under.Outcome != "skipped" {
					got = append(got, say(*l.View.Under))
				}
			}
			switch {
			case s.Process == "worker" && len(s.Listeners) > 0:
				t.Errorf("the worker listens: %v", got)
			case s.Process == "web" && len(got) != len(c.want):
				t.Errorf("with ADMIN=%q it %v, not %v", c.admin, got, c.want)
			case s.Process == "web":
				for i, w := range c.want {
					if got[i] != w {
						t.Errorf("with ADMIN=%q it %v, not %v", c.admin, got, c.want)
					}
				}
			}
		}
	}
}
