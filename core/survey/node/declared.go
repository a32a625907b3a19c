package node

import (
	"strings"

	"ubique/core/command"
	"ubique/core/fact"
)

// brings are packages that a package always installs beside itself, so that
// code finds them although only the first is declared. Source: the packages'
// own manifests, read 2026-11.
var brings = map[string]string{
	"express":                  "body-parser cookie accepts send serve-static qs mime-types http-errors on-finished",
	"@nestjs/core":             "@nestjs/common rxjs reflect-metadata",
	"@nestjs/platform-express": "express cors multer body-parser",
	"next":                     "react react-dom styled-jsx",
	"mongoose":                 "mongodb bson",
	"socket.io":                "engine.io socket.io-adapter socket.io-parser ws",
	"@apollo/server":           "@apollo/utils.keyvaluecache",
	"react-scripts":            "webpack",
}

// Declared says whether a package is declared, in the lock's top folder, or
// always brought by one that is.
func Declared(c *fact.Component, name string) (fact.Dependency, bool) {
	if d, ok := c.Dep(name); ok {
		return d, true
	}
	if types, ok := c.Dep("@types/" + name); ok && strings.HasSuffix(name, "-types") {
		return types, true
	}
	if c.Locked[name] {
		return fact.Dependency{Name: name}, true
	}
	for _, d := range c.Dependencies {
		if strings.Contains(" "+brings[d.Name]+" ", " "+name+" ") {
			return fact.Dependency{Name: name, Dev: false}, true
		}
	}
	return fact.Dependency{}, false
}

// ProgramPackages gives the packages that give a program.
func ProgramPackages(name string) []string {
	if p := command.Lookup(name); p != nil {
		return p.Packages
	}
	return nil
}
