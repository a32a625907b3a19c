// Package bench makes trees of a given size to measure Ubique on. The trees
// hold services that differ from each other, the way a monorepo grows.
package bench

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
)

// Write writes a tree of n components that together have about the given
// number of files, half of the components for Node.js and half for Python.
func Write(dir string, n, files int) error {
	each := max(4, files/max(1, n))
	for i := range n {
		root := filepath.Join(dir, fmt.Sprintf("team-%02d", i%20), fmt.Sprintf("service-%03d", i))
		plant := node
		if i%2 == 1 {
			plant = python
		}
		if err := write(root, plant(i, each)); err != nil {
			return fmt.Errorf("writing a tree to measure: %w", err)
		}
	}
	return nil
}

func write(root string, files map[string]string) error {
	for name, text := range files {
		p := filepath.Join(root, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(p), 0o755); err != nil {
			return err
		}
		if err := os.WriteFile(p, []byte(text), 0o644); err != nil {
			return err
		}
	}
	return nil
}

func node(i, files int) map[string]string {
	m := map[string]string{
		"package.json": fmt.Sprintf("{\n  \"name\": \"service-%d\",\n  \"engines\": { \"node\": \"24.x\" },\n  \"scripts\": { \"start\": \"node src/server.js\" },\n  \"dependencies\": { \"express\": \"5.1.0\" }\n}\n", i),
		"Procfile":     "web: node src/server.js\n",
		"src/server.js": "const express = require('express');\nconst { port } = require('./config');\nconst routes = require('./routes/route-0');\n" +
			"const app = express();\napp.use('/', routes);\napp.listen(port, () => console.log(`up on ${port}`));\n",
		"src/config.js": fmt.Sprintf("module.exports = { port: Number(process.env.PORT) || %d, region: process.env.REGION ?? 'hill' };\n", 3000+i),
	}
	for k := range files - len(m) {
		next := ""
		if k < 20 {
			next = fmt.Sprintf("const next = require('./route-%d');\nrouter.use('/more', next);\n", k+1)
		}
		if k == 20 || k >= files-5 {
			next = ""
		}
		m[fmt.Sprintf("src/routes/route-%d.js", k)] = fmt.Sprintf("const { Router } = require('express');\nconst router = Router();\n%s%s\nmodule.exports = router;\n", next, handlers(k, i))
	}
	return m
}

func handlers(k, i int) string {
	var b strings.Builder
	for h := range 12 {
		fmt.Fprintf(&b, "\n// Star %d of constellation %d: what the telescope saw at hour %d.\nrouter.get('/stars/%d/%d', async (req, res) => {\n  const magnitude = Number(req.query.magnitude ?? %d.%d);\n  if (Number.isNaN(magnitude)) {\n    return res.status(400).json({ error: 'magnitude is no number' });\n  }\n  res.json({ star: %d, magnitude, seen: new Date().toISOString() });\n});\n", h, k, h, k, h, h%6, i%10, k*100+h)
	}
	return b.String()
}

func python(i, files int) map[string]string {
	m := map[string]string{
		"requirements.txt":  "flask==3.1.2\ngunicorn==23.0.0\n",
		".python-version":   "3.13\n",
		"Procfile":          "web: gunicorn app:app --bind 0.0.0.0:$PORT\n",
		"app.py":            fmt.Sprintf("import os\n\nfrom flask import Flask\n\nfrom night.plan_0 import plan\n\napp = Flask(__name__)\napp.config[\"REGION\"] = os.environ.get(\"REGION\", \"hill-%d\")\n\n\n@app.get(\"/\")\ndef tonight():\n    return plan()\n", i),
		"night/__init__.py": "",
	}
	for k := range files - len(m) {
		imports, call := "", "{}"
		if k < 20 && k < files-8 {
			imports = fmt.Sprintf("from night.plan_%d import plan as rest\n", k+1)
			call = "rest()"
		}
		m[fmt.Sprintf("night/plan_%d.py", k)] = fmt.Sprintf("from dataclasses import dataclass\n\n%s\n\n@dataclass\nclass Target:\n    name: str\n    altitude: float = %d.5\n\n\n%s\n\ndef plan() -> dict:\n    found = %s\n    found[\"%d\"] = Target(name=\"M%d\").name\n    return found\n", imports, k%90, targets(k), call, k, k%110+1)
	}
	return m
}

func targets(k int) string {
	var b strings.Builder
	for h := range 12 {
		fmt.Fprintf(&b, "\ndef hour_%d(targets: list[Target]) -> list[str]:\n    \"\"\"What can be seen in hour %d of night %d.\"\"\"\n    return sorted(t.name for t in targets if t.altitude > %d and not t.name.startswith(\"planet\"))\n\n", h, h, k, 10+h)
	}
	return b.String()
}
