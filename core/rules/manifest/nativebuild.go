package manifest

import (
	"fmt"
	"strings"

	"ubique/core/fact"
	"ubique/core/rules"
)

// natives are packages that are compiled when they are installed, with the
// variant that comes compiled, and what the build needs. Source: the packages'
// own installation notes, read 2026-11.
var natives = map[string]map[string]struct{ variant, needs string }{
	"python": {
		"psycopg2": {"psycopg2-binary", "a C compiler, pg_config and libpq"}, "psycopg[c]": {"psycopg[binary]", "a C compiler, pg_config and libpq"}, "uwsgi": {"pyuwsgi", "a C compiler and the headers of Python"},
		"pycrypto": {"pycryptodome", "a C compiler"}, "mysqlclient": {"pymysql", "a C compiler and the headers of MySQL's client"}, "mysql-python": {"pymysql", "a C compiler and the headers of MySQL's client"},
		"python-levenshtein-c": {"rapidfuzz", "a C compiler"}, "pylibmc": {"pymemcache", "a C compiler and libmemcached"}, "pygraphviz": {"graphviz", "a C compiler and the headers of Graphviz"}, "fasttext": {"fasttext-wheel", "a C++ compiler"},
	},
	"node": {
		"bcrypt": {"bcryptjs", "a C++ compiler and Python, wherever no prebuilt file fits the host"}, "node-sass": {"sass", "a C++ compiler and Python"}, "fibers": {"async functions", "a C++ compiler and Python"},
		"libxmljs": {"libxmljs2", "a C++ compiler and Python"}, "pg-native": {"pg", "a C++ compiler and libpq"}, "kerberos": {"a prebuilt release", "a C++ compiler and the headers of Kerberos"}, "canvas": {"@napi-rs/canvas", "a C++ compiler and Cairo, wherever no prebuilt file fits the host"},
		"scrypt": {"node:crypto", "a C++ compiler and Python"}, "node-expat": {"sax", "a C++ compiler and Python"},
	},
	"ruby": {"therubyracer": {"mini_racer", "a C++ compiler"}, "sassc": {"sass-embedded", "a C++ compiler"}, "hiredis": {"hiredis-client", "a C compiler"}, "libv8": {"libv8-node", "a C++ compiler"}, "charlock_holmes": {"rchardet", "a C++ compiler and ICU"}},
}

// prebuilt are packages of Node.js that bring compiled files for the usual
// hosts: they build only where those do not fit.
var prebuilt = map[string]bool{"bcrypt": true, "canvas": true, "kerberos": true}

var nativeBuild = &rules.Rule{
	ID: "manifest/native-build", Level: rules.Risk, Title: "a package that is compiled at install, where a compiled variant exists", Doc: doc("native-build"),
	Check: func(p *rules.Pass) {
		c := p.Component
		for _, d := range c.Dependencies {
			n, ok := natives[c.Runtime][d.Name]
			if !ok || d.Dev || d.Marker != "" || d.Group == "workspace root" || d.Optional && !strings.Contains(d.Name, "[") {
				continue
			}
			for _, on := range p.On {
				level := rules.Risk
				if on.Host.Route == "image" {
					slim, tools := builds(on.Code)
					if tools || !slim {
						continue
					}
					level = rules.Blocker
				}
				if prebuilt[d.Name] && level != rules.Blocker || prebuilt[d.Name] && !alpine(on.Code) {
					continue
				}
				p.Report(on, level, rules.Finding{Where: d.At, Message: fmt.Sprintf("%s is compiled when it is installed and needs %s", d.Name, n.needs), Remedy: "declare " + n.variant + " instead, or install what the build needs first"})
			}
		}
	},
}

// compilers are packages of distributions that bring what builds need.
var compilers = []string{"build-essential", "build-base", "gcc", "g++", "libpq-dev", "postgresql-dev", "libpq", "make", "clang", "default-libmysqlclient-dev", "mariadb-dev", "python3-dev", "musl-dev"}

// builds says whether a container stands on a base without a compiler, and
// whether it installs one.
func builds(s *fact.Start) (slim, tools bool) {
	if s == nil || s.Descriptor == nil || s.Descriptor.Image == nil {
		return false, true
	}
	for _, b := range s.Descriptor.Image.Bases {
		slim = slim || strings.Contains(b.Tag, "slim") || strings.Contains(b.Tag, "alpine") || b.Name == "alpine"
	}
	for _, r := range s.Descriptor.Image.Runs {
		for _, w := range compilers {
			tools = tools || strings.Contains(r.Text, w)
		}
	}
	return slim, tools
}

func alpine(s *fact.Start) bool {
	if s == nil || s.Descriptor == nil || s.Descriptor.Image == nil {
		return false
	}
	for _, b := range s.Descriptor.Image.Bases {
		if strings.Contains(b.Tag, "alpine") {
			return true
		}
	}
	return false
}
