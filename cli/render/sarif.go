package render

import (
	"encoding/json"
	"io"
	"net/url"
	"strings"

	"ubique/core/check"
	"ubique/core/place"
	"ubique/core/rules"
	"ubique/core/rules/catalog"
)

// The parts of SARIF 2.1.0 (OASIS Standard, 27 March 2020) that are written.
type sarifLog struct {
	Schema  string     `json:"$schema"`
	Version string     `json:"version"`
	Runs    []sarifRun `json:"runs"`
}

type sarifRun struct {
	Tool    sarifTool     `json:"tool"`
	Results []sarifResult `json:"results"`
	Columns string        `json:"columnKind"`
}

type sarifTool struct {
	Driver sarifDriver `json:"driver"`
}

type sarifDriver struct {
	Name    string      `json:"name"`
	Version string      `json:"version"`
	Rules   []sarifRule `json:"rules"`
}

type sarifText struct {
	Text     string `json:"text"`
	Markdown string `json:"markdown,omitempty"`
}

type sarifRule struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Short   sarifText   `json:"shortDescription"`
	Help    sarifText   `json:"help"`
	Default sarifConfig `json:"defaultConfiguration"`
}

type sarifConfig struct {
	Level string `json:"level"`
}

type sarifResult struct {
	RuleID       string            `json:"ruleId"`
	RuleIndex    int               `json:"ruleIndex"`
	Level        string            `json:"level"`
	Message      sarifText         `json:"message"`
	Locations    []sarifLocation   `json:"locations"`
	Related      []sarifLocation   `json:"relatedLocations,omitempty"`
	Fingerprints map[string]string `json:"partialFingerprints"`
	Properties   map[string]any    `json:"properties"`
}

type sarifLocation struct {
	ID       *int          `json:"id,omitempty"`
	Physical sarifPhysical `json:"physicalLocation"`
	Message  *sarifText    `json:"message,omitempty"`
}

type sarifPhysical struct {
	Artifact sarifArtifact `json:"artifactLocation"`
	Region   *sarifRegion  `json:"region,omitempty"`
}

type sarifArtifact struct {
	URI  string `json:"uri"`
	Base string `json:"uriBaseId"`
}

type sarifRegion struct {
	StartLine   int `json:"startLine"`
	StartColumn int `json:"startColumn"`
	EndLine     int `json:"endLine"`
	EndColumn   int `json:"endColumn"`
}

var sarifLevels = map[rules.Level]string{rules.Blocker: "error", rules.Risk: "warning", rules.Advice: "note"}

func sarifAt(at place.Span) sarifPhysical {
	parts := strings.Split(at.File, "/")
	for i := range parts {
		parts[i] = url.PathEscape(parts[i])
	}
	p := sarifPhysical{Artifact: sarifArtifact{strings.Join(parts, "/"), "%SRCROOT%"}}
	if at.Line > 0 {
		p.Region = &sarifRegion{at.Line, max(1, at.Col), max(at.Line, at.EndLine), max(1, at.EndCol)}
	}
	return p
}

// SARIF writes the findings as SARIF 2.1.0. Columns count characters.
func SARIF(w io.Writer, version string, r *check.Report) error {
	driver := sarifDriver{Name: "ubique", Version: version, Rules: []sarifRule{}}
	index := map[string]int{}
	for i, x := range catalog.All() {
		index[x.ID] = i
		driver.Rules = append(driver.Rules, sarifRule{x.ID, x.ID, sarifText{Text: x.Title}, sarifText{x.Doc, x.Doc}, sarifConfig{sarifLevels[x.Level]}})
	}
	results := []sarifResult{}
	for _, f := range r.Findings {
		text := f.Message
		if f.Remedy != "" {
			text += ". Instead: " + f.Remedy
		}
		var hosts []string
		for _, h := range f.Hosts {
			hosts = append(hosts, h.Host)
		}
		res := sarifResult{RuleID: f.Rule, RuleIndex: index[f.Rule], Level: sarifLevels[f.Level], Message: sarifText{Text: text},
			Locations: []sarifLocation{{Physical: sarifAt(f.Where)}}, Fingerprints: map[string]string{"ubique/1": f.Fingerprint},
			Properties: map[string]any{"component": f.Component, "hosts": some(hosts)}}
		for i, s := range f.Trail {
			id := i + 1
			res.Related = append(res.Related, sarifLocation{ID: &id, Physical: sarifAt(s.At), Message: &sarifText{Text: s.Note}})
		}
		results = append(results, res)
	}
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(sarifLog{"https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json", "2.1.0",
		[]sarifRun{{sarifTool{driver}, results, "unicodeCodePoints"}}})
}
