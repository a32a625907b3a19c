package secret

import (
	"fmt"
	"path"
	"strings"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/source"
	"ubique/core/survey"
)

// keyFiles are names of files that hold credentials, by what they hold.
var keyFiles = map[string]string{
	"id_rsa": "a private key", "id_ed25519": "a private key", "id_ecdsa": "a private key", "id_dsa": "a private key",
	".netrc": "passwords of hosts", ".pgpass": "passwords of databases", ".htpasswd": "passwords", ".git-credentials": "passwords of git", ".my.cnf": "passwords of a database",
	".npmrc": "npm settings", ".pypirc": "passwords of a package index",
}

var fileShipped = &rules.Rule{
	ID: "secret/file-shipped", Level: rules.Risk, Title: "a file with secrets goes up", Doc: doc("file-shipped"),
	Tree: func(p *rules.TreePass) {
		for _, e := range p.Tree.Entries {
			if !e.OnDisk || e.Link || p.Tree.State(e.Path) != source.Shipped {
				continue
			}
			base := path.Base(e.Path)
			what, at := "", place.Span{}
			switch {
			case base == ".env" || strings.HasPrefix(base, ".env.") || strings.HasSuffix(base, ".env") && strings.HasPrefix(base, "."), base == "secrets.env" || base == "prod.env" || base == "production.env":
				if example(base) {
					continue
				}
				what, at = dotenv(p.Tree, e.Path)
			case strings.HasSuffix(base, ".pem") || strings.HasSuffix(base, ".key") || keyFiles[base] == "a private key":
				what, at = holds(p.Tree, e.Path, "PRIVATE KEY", "a private key")
			case strings.HasSuffix(base, ".p12") || strings.HasSuffix(base, ".pfx") || strings.HasSuffix(base, ".jks") || strings.HasSuffix(base, ".keystore"):
				what, at = "a key store", place.Span{File: e.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
			case base == ".npmrc":
				what, at = holds(p.Tree, e.Path, "_authToken=", "a token of a package registry")
				if what != "" && strings.Contains(lineOf(p.Tree, at), "${") {
					continue
				}
			case keyFiles[base] != "":
				what, at = keyFiles[base], place.Span{File: e.Path, Line: 1, Col: 1, EndLine: 1, EndCol: 1}
			case strings.HasSuffix(base, ".json") && (strings.Contains(base, "credential") || strings.Contains(base, "service-account") || strings.Contains(base, "serviceAccount") || strings.Contains(base, "secret")):
				what, at = holds(p.Tree, e.Path, "PRIVATE KEY", "a private key")
				if what == "" {
					what, at = holds(p.Tree, e.Path, `"client_secret"`, "a client's secret")
				}
			}
			if what == "" || testOnly(e.Path) {
				continue
			}
			verb := "is tracked by git"
			remedy := fmt.Sprintf("git rm --cached %s, the name in .gitignore, and new secrets: the old ones are in the history", e.Path)
			if p.Tree.Route == source.Upload {
				verb = "goes up with the folder"
				remedy = fmt.Sprintf("%s in .gitignore, and the values in the host's settings", base)
			}
			p.Report(0, "git", rules.Finding{Where: at, Message: fmt.Sprintf("%s %s and holds %s", e.Path, verb, what), Remedy: remedy})
		}
	},
}

func example(base string) bool {
	for _, w := range []string{"example", "sample", "template", "dist", "defaults", "schema", "test", "testing", "ci", "development"} {
		if strings.Contains(base, "."+w) || strings.HasSuffix(base, "-"+w) {
			return true
		}
	}
	return false
}

func testOnly(p string) bool {
	for part := range strings.SplitSeq(path.Dir(p), "/") {
		switch strings.ToLower(part) {
		case "test", "tests", "__tests__", "fixtures", "testdata", "spec", "e2e", "examples", "example", "mocks", "__mocks__", "node_modules", "site-packages", "venv", ".venv":
			return true
		}
	}
	return false
}

func lineOf(t *source.Tree, at place.Span) string {
	f, err := t.Code(at.File)
	if err != nil {
		return ""
	}
	return f.Lines().Text(at.Line)
}

// dotenv tells a dotenv file that holds a secret from one with plain settings.
func dotenv(t *source.Tree, name string) (string, place.Span) {
	f, err := t.Code(name)
	if err != nil {
		return "", place.Span{}
	}
	for _, k := range document.Dotenv(name, f.Data, f.Lines()).Kids {
		v := strings.TrimSpace(k.Text)
		if v == "" || strings.HasPrefix(v, "${") || strings.HasPrefix(v, "<") {
			continue
		}
		if i := strings.Index(v, "://"); i > 0 {
			rest := v[i+3:]
			if j := strings.IndexAny(rest, "@/"); j > 0 && rest[j] == '@' && strings.Contains(rest[:j], ":") {
				return "the password in " + k.Key, k.KeyAt()
			}
			continue
		}
		if survey.SecretName(k.Key) || secretToken(k.Key) {
			return k.Key, k.KeyAt()
		}
	}
	return "", place.Span{}
}

func secretToken(key string) bool {
	up := strings.ToUpper(key)
	return (strings.HasSuffix(up, "_TOKEN") || strings.HasSuffix(up, "_PASS") || strings.HasSuffix(up, "_PWD") || strings.HasSuffix(up, "_KEY") || up == "TOKEN") && !strings.Contains(up, "PUBLIC") && !strings.Contains(up, "PUBLISHABLE") && !strings.HasPrefix(up, "VITE_") && !strings.HasPrefix(up, "REACT_APP_")
}

func holds(t *source.Tree, name, text, what string) (string, place.Span) {
	f, err := t.Code(name)
	if err != nil {
		return "", place.Span{}
	}
	i := strings.Index(string(f.Data), text)
	if i < 0 {
		return "", place.Span{}
	}
	line, _ := f.Lines().Position(i)
	return what, place.Span{File: name, Line: line, Col: 1, EndLine: line, EndCol: 1}
}
