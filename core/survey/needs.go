package survey

import (
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/value"
)

// Need is something that a sandboxed runtime must be granted.
type Need struct {
	Kind string // net, env, read, write, run, sys
	Call string
	At   place.Span
}

// needs says which calls need which permission of Deno (Deno manual,
// "Security and permissions", 2026-11).
var needs = map[string]string{
	"Deno.readTextFile": "read", "Deno.readTextFileSync": "read", "Deno.readFile": "read", "Deno.readFileSync": "read", "Deno.readDir": "read", "Deno.readDirSync": "read", "Deno.stat": "read", "Deno.open": "read",
	"Deno.writeTextFile": "write", "Deno.writeTextFileSync": "write", "Deno.writeFile": "write", "Deno.writeFileSync": "write", "Deno.mkdir": "write", "Deno.remove": "write", "Deno.openKv": "read",
	"@std/http/file-server.serveDir": "read", "@std/http/file-server.serveFile": "read", "@std/http.serveDir": "read", "@std/http.serveFile": "read",
	"Deno.hostname": "sys", "Deno.osRelease": "sys", "Deno.loadavg": "sys",
}

// Needs lists what the code of a start must be granted, each kind once, apart
// from the network and the environment.
func Needs(st *fact.Start) []Need {
	var list []Need
	seen := map[string]bool{}
	for _, name := range st.Reached {
		f := st.Program.Loader.File(name)
		if f == nil || f.Skimmed {
			continue
		}
		for _, site := range f.Calls {
			if site.InTry {
				continue
			}
			v := st.Program.Callee(site)
			if v.Kind != value.External {
				continue
			}
			if kind := needs[v.Text]; kind != "" && !seen[kind] {
				seen[kind] = true
				list = append(list, Need{kind, site.Node.Kid(0).Dotted(), f.At(site.Node)})
			}
		}
	}
	return list
}
