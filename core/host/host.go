// Package host holds the contracts of hosts and of the kinds of hosts that
// ship: what each receives, how it starts a component, how it reaches it,
// what it sets. A contract is data; it judges nothing.
package host

import (
	"embed"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"sort"
	"strings"

	"ubique/core/document"
	"ubique/core/place"
	"ubique/core/value"
)

//go:embed kinds/*.yaml
var kinds embed.FS

//go:embed host.schema.json
var schemaJSON []byte

// Schema is the published JSON Schema of a contract.
func Schema() []byte { return schemaJSON }

// Port says how a host and a component agree on the port.
type Port struct {
	How      string // injected, fixed, declared, mapped, none
	Variable string
	Number   int // 0: new at each boot
}

// Contract describes a host.
type Contract struct {
	Name, Extends, Title, About string
	Route                       string // git, upload, image
	Starts                      []string
	Process                     string
	WebRequired                 bool
	Port                        Port
	Reach                       string
	Disk                        string
	MemoryMB                    int
	User                        string
	OpenWithin                  int // seconds
	RunsBuildScript             bool
	BuildDev, RunDev            string // true, false, container
	Release                     string
	Sets                        map[string]string
	Reserves                    []string
	Runtimes                    []string
	Versions                    map[string][]string
	Needs                       []string
	Health                      string
	File                        string
}

// Environment is what the host sets, without the port.
func (c *Contract) Environment() value.Environ {
	m := map[string]string{}
	for k, v := range c.Sets {
		m[k] = v
	}
	return value.Environ{Set: m}
}

// Kinds gives the kinds that ship, by name.
func Kinds() ([]*Contract, error) {
	entries, err := kinds.ReadDir("kinds")
	if err != nil {
		return nil, fmt.Errorf("reading the kinds of hosts: %w", err)
	}
	var list []*Contract
	for _, e := range entries {
		data, err := kinds.ReadFile("kinds/" + e.Name())
		if err != nil {
			return nil, fmt.Errorf("reading the kinds of hosts: %w", err)
		}
		c, err := read("kinds/"+e.Name(), data, false)
		if err != nil {
			return nil, err
		}
		list = append(list, c)
	}
	sort.Slice(list, func(i, j int) bool { return order(list[i].Name) < order(list[j].Name) })
	return list, nil
}

func order(name string) string {
	for i, n := range []string{"pushed", "proxied", "described", "scripted", "imported", "image", "composed", "cluster", "scaled", "unit", "files"} {
		if n == name {
			return string(rune('a' + i))
		}
	}
	return "~" + name
}

// Load reads a host of the user's own from a YAML file. It is validated
// against the schema; errors name file, line and column.
func Load(file string, known []*Contract) (*Contract, error) {
	data, err := os.ReadFile(filepath.Clean(file))
	if err != nil {
		return nil, fmt.Errorf("reading the host: %w", err)
	}
	c, err := read(file, data, true)
	if err != nil {
		return nil, err
	}
	if c.Extends == "" {
		return c, nil
	}
	for _, k := range known {
		if k.Name == c.Extends {
			return merge(k, c), nil
		}
	}
	return nil, fmt.Errorf("%s: extends %q, which is no host that is known here; known are %s", file, c.Extends, names(known))
}

func names(list []*Contract) string {
	var n []string
	for _, c := range list {
		n = append(n, c.Name)
	}
	return strings.Join(n, ", ")
}

func read(name string, data []byte, validate bool) (*Contract, error) {
	lines := place.NewLines(data)
	docs, err := document.YAML(name, data, lines)
	if err != nil {
		return nil, err
	}
	if len(docs) == 0 {
		return nil, fmt.Errorf("%s: the file is empty; a host has at least a name and a title", name)
	}
	d := docs[0]
	if validate {
		s, err := document.JSON("host.schema.json", schemaJSON, place.NewLines(schemaJSON), false)
		if err != nil {
			return nil, err
		}
		if errs := document.Validate(s, d); len(errs) > 0 {
			return nil, errs[0]
		}
	}
	c := &Contract{File: name, Name: d.Get("name").Str(), Extends: d.Get("extends").Str(), Title: d.Get("title").Str(), About: strings.TrimSpace(d.Get("about").Str()),
		Route: d.Get("route").Str(), Process: d.Get("process").Str(), Reach: d.Get("reach").Str(), Disk: d.Get("disk").Str(), User: d.Get("user").Str(), Release: d.Get("release").Str(), Health: d.Get("health").Str()}
	c.Starts, c.Reserves, c.Runtimes, c.Needs = strs(d.Get("starts")), strs(d.Get("reserves")), strs(d.Get("runtimes")), strs(d.Get("needs"))
	c.WebRequired = scalar(d.Get("web_required")) == "true"
	c.Port.How, c.Port.Variable = d.Get("port", "how").Str(), d.Get("port", "variable").Str()
	c.Port.Number, _ = d.Get("port", "number").Int()
	c.MemoryMB, _ = d.Get("memory_mb").Int()
	c.OpenWithin, _ = d.Get("open_within_seconds").Int()
	c.RunsBuildScript = scalar(d.Get("build", "runs_build_script")) == "true"
	c.BuildDev, c.RunDev = scalar(d.Get("build", "development_dependencies")), scalar(d.Get("run", "development_dependencies"))
	if s := d.Get("sets"); s != nil {
		c.Sets = map[string]string{}
		for _, k := range s.Items() {
			c.Sets[k.Key] = k.Text
		}
	}
	for _, k := range d.Get("versions").Items() {
		if c.Versions == nil {
			c.Versions = map[string][]string{}
		}
		for _, v := range k.Items() {
			c.Versions[k.Key] = append(c.Versions[k.Key], v.Text)
		}
	}
	return c, nil
}

func scalar(n *document.Node) string { s, _ := n.Scalar(); return s }

func strs(n *document.Node) []string {
	var list []string
	for _, k := range n.Items() {
		list = append(list, k.Text)
	}
	return list
}

// merge gives the base with what the host changes.
func merge(base, c *Contract) *Contract {
	m := *base
	m.Name, m.Extends, m.File = c.Name, c.Extends, c.File
	set := func(to *string, from string) {
		if from != "" {
			*to = from
		}
	}
	set(&m.Title, c.Title)
	set(&m.About, c.About)
	set(&m.Route, c.Route)
	set(&m.Process, c.Process)
	set(&m.Reach, c.Reach)
	set(&m.Disk, c.Disk)
	set(&m.User, c.User)
	set(&m.Release, c.Release)
	set(&m.Health, c.Health)
	set(&m.BuildDev, c.BuildDev)
	set(&m.RunDev, c.RunDev)
	set(&m.Port.How, c.Port.How)
	set(&m.Port.Variable, c.Port.Variable)
	if c.Port.Number != 0 {
		m.Port.Number = c.Port.Number
	}
	if c.MemoryMB != 0 {
		m.MemoryMB = c.MemoryMB
	}
	if c.OpenWithin != 0 {
		m.OpenWithin = c.OpenWithin
	}
	for _, l := range []struct{ to, from *[]string }{{&m.Starts, &c.Starts}, {&m.Reserves, &c.Reserves}, {&m.Runtimes, &c.Runtimes}, {&m.Needs, &c.Needs}} {
		if len(*l.from) > 0 {
			*l.to = *l.from
		}
	}
	if c.Versions != nil {
		m.Versions = c.Versions
	}
	m.Sets = map[string]string{}
	for k, v := range base.Sets {
		m.Sets[k] = v
	}
	for k, v := range c.Sets {
		m.Sets[k] = v
	}
	return &m
}

// Offers reports whether the host runs a runtime.
func (c *Contract) Offers(runtime string) bool {
	return len(c.Runtimes) == 0 || slices.Contains(c.Runtimes, runtime) || slices.Contains(c.Runtimes, "any")
}

// Words explains the contract in sentences.
func (c *Contract) Words() []string {
	var w []string
	add := func(f string, a ...any) { w = append(w, fmt.Sprintf(f, a...)) }
	switch c.Route {
	case "git":
		add("Receives the files that git tracks.")
	case "upload":
		add("Receives the folder, less its ignore rules and dependency folders.")
	case "image":
		add("Receives what the container file copies from its build context, less the ignore file.")
	}
	if len(c.Starts) > 0 {
		add("The start command comes from: %s; the first that is there counts.", strings.Join(c.Starts, ", then "))
	}
	if c.WebRequired {
		add("Only the process %s is reached from outside; a process file without it does not come up.", c.Process)
	}
	switch c.Port.How {
	case "injected":
		n := "a number that is new at each boot"
		if c.Port.Number > 0 {
			n = fmt.Sprint(c.Port.Number)
		}
		add("The port is given in the variable %s: %s. The component must listen there.", c.Port.Variable, n)
	case "fixed":
		add("The port is %d, also given in %s.", c.Port.Number, c.Port.Variable)
	case "declared":
		add("The port is the one that the descriptor declares.")
	case "mapped":
		add("The port is mapped by the descriptor.")
	case "none":
		add("There is no port: the host calls the application itself.")
	}
	switch c.Reach {
	case "any":
		add("It is reached from another machine: it must listen on any interface, not on loopback only.")
	case "loopback":
		add("A proxy on the same machine reaches it: loopback is enough.")
	}
	switch c.Disk {
	case "lost":
		add("Files that it writes are lost at the next restart.")
	case "read-only":
		add("The disk can only be read, but for the folder for temporary files.")
	case "volumes":
		add("Only files in volumes are kept.")
	}
	if c.RunsBuildScript {
		add("The manifest's build script is run; development dependencies are there while it runs.")
	}
	if c.RunDev == "false" {
		add("Development dependencies are gone when the component runs.")
	}
	if c.OpenWithin > 0 {
		add("The port must be open within %d seconds.", c.OpenWithin)
	}
	if c.MemoryMB > 0 {
		add("It has %d MB of memory.", c.MemoryMB)
	}
	if len(c.Sets) > 0 {
		var names []string
		for k, v := range c.Sets {
			names = append(names, k+"="+v)
		}
		sort.Strings(names)
		add("It sets %s.", strings.Join(names, ", "))
	}
	if len(c.Needs) > 0 {
		add("It applies only where the tree has: %s.", strings.Join(c.Needs, ", "))
	}
	return w
}
