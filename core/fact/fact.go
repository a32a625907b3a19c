// Package fact holds what the source says, each with its place: components,
// pins, manifests, dependencies, starts, listeners, variables, settings,
// imports, descriptors. It knows nothing of what is wrong or right.
package fact

import (
	"slices"
	"strings"

	"ubique/core/code"
	"ubique/core/command"
	"ubique/core/document"
	"ubique/core/lock"
	"ubique/core/place"
	"ubique/core/value"
	"ubique/core/version"
)

// Component is one deployable unit of the tree.
type Component struct {
	ID           string // the folder, "." for the root of the tree
	Dir          string // the folder, empty for the root
	Runtime      string // node, python
	Version      string // the version that the pins leave, as text; may be empty
	Frameworks   []string
	Pins         []Pin
	Manifests    []*Manifest
	Dependencies []Dependency
	Members      []Dependency              // what the members of its workspace declare to run
	Scripts      map[string]command.Script // package scripts
	Tasks        map[string]bool           // the tasks of its build tool that its manifest gives another meaning
	Starts       []*Start
	Variables    []Variable
	Routes       []Route // of the first start that has any; only where they are asked for
	Declared     []Declared
	Imports      []Import
	Settings     []Setting
	Secrets      []Secret
	Descriptors  []*Descriptor
	Unknown      []Question
	Locked       map[string]bool // packages that the lock installs at the top
	HasLock      bool
	Locks        []*lock.Lock // the nearest ones, the one that counts first
	LockDir      string       // the folder in which they stand
	Manager      string       // the package manager that the tree says it uses; empty where it does not
	ManagerAt    place.Span   // where it says so
	Complete     bool         // the manifests could be read to the end
	Broken       bool         // a manifest cannot be read at all
	Misnamed     []NearMiss
	Bundled      bool   // a bundler makes one artefact of the code
	Outside      []Path // paths of manifests that leave the tree
	Artefacts    []Artefact
	Shipments    []Shipment // filled for surveys
	Variant      string     // the program that runs it instead of the runtime's own: bun
	Root         string     // the folder that the web server serves (PHP)
	Install      Install
	Granted      bool // its configuration grants permissions to the runtime
}

// NearMiss is a file whose name is nearly one that must be exact.
type NearMiss struct {
	Path   string // of the file
	Exact  string // the name that is looked for
	Reader string // what looks for it
}

// Misses reports whether one of these names is there only as a near miss.
func (c *Component) Misses(names ...string) bool {
	return slices.ContainsFunc(c.Misnamed, func(m NearMiss) bool { return slices.Contains(names, m.Exact) })
}

// Install says how a container file installs the dependencies.
type Install struct {
	Known      bool
	NoDev      bool       // development dependencies are left out of what runs
	BuildNoDev bool       // and are gone before the build step
	At         place.Span // the line that leaves them out
	Build      string     // the package script that builds without them
	BuildAt    place.Span // the line that runs it
}

// Pin is a statement of which version of the runtime is wanted.
type Pin struct {
	What  string // node, python
	Text  string
	Set   version.Set
	Known bool   // Set is understood
	Alias bool   // a name such as lts/*, latest, stable
	Lower bool   // a constraint of the source (go 1.22), not a choice of a version
	Wrong string // why it is not in the form that is read; empty where it is
	Form  string // how it is written there, with V for the version
	From  string
	Rank  int    // how far from the source code: manifest 1, version file 2, container base 3, CI 4
	Says  string // how it stands on the day of the report
	At    place.Span
}

// Manifest is a dependency manifest.
type Manifest struct {
	File, Manager, Lock string
	LockDir             string
}

// Dependency is one declared package.
type Dependency struct {
	Name     string // normalised
	Spec     string
	Dev      bool
	Optional bool
	Group    string
	Pinned   bool // the spec names a version or a range with an upper end
	Exact    bool
	Set      version.Set // the versions that are asked for
	Known    bool        // Set is understood
	Marker   string      // the condition under which it is wanted
	Hashed   bool        // hashes of what may be installed stand with it
	Real     string      // the package that an alias stands for
	Linked   bool        // a package of the tree, which no lock needs to hold
	File     string
	At       place.Span
}

// Target is what a start loads.
type Target struct {
	File     string // in the tree, empty where it is not found
	Named    string // as written
	Module   string
	Callable string
	At       place.Span
	Kind     command.TargetKind
	Built    bool   // made by the build
	Sourced  string // the source file that a build output comes from
	Factory  bool
	Args     []command.Word // what the program itself is given, where the runtime says it
	Meant    string         // what was probably meant, where it is not there
	Folder   bool           // it is a folder that is served
	Case     string         // the file that would be found if letter case did not count
}

// Dotenv is a dotenv file that a program reads.
type Dotenv struct {
	Path string       // in the tree
	By   *value.Value // what names it, where the environment decides that; else nil
	When *value.Value // the condition under which it is read; nil: always
	Over bool         // what stands in it beats the environment
}

// Start is one way to start a component.
type Start struct {
	Process    string // web unless a process file says otherwise
	Command    string
	Source     string // process file, package script, container, start script, usual entry
	File       string
	At         place.Span
	Final      command.Final
	Target     *Target
	Listeners  []*Listener
	Reached    []string // the code files that run, in order of discovery
	Env        map[string]string
	Program    *value.Eval
	Parse      error
	Descriptor *Descriptor
	Settings   []Setting
	Imports    []Import
	Secrets    []Secret
	Variables  []Variable
	Personal   []Path     // paths of one person's machine
	Dotenv     []Dotenv   // the dotenv files that it reads, in order
	Server     string     // the file of settings that the server itself reads
	Config     *code.File // the settings module of a Django site
	// Beside are the programs that the command leaves in the background before it comes
	// to the last one; their listeners and variables stand among those of the start.
	Beside []*Start
	// More adds the listeners that the program comes to in an environment besides
	// those that are known; nil: there is no way to tell.
	More func(value.Environ)
	// Stopped says why the program could not be followed to its end in an environment, and
	// at which statement; empty where it was. Nil: it is not followed.
	Stopped func(value.Environ) (reason string, at place.Span)
	// Asks are the variables that the program reads in an environment and that are not
	// among Variables, as going through it tells; nil: it is not gone through.
	Asks func(value.Environ) []Variable
	// Copes reports whether the program certainly reads a variable that an environment
	// does not have, and goes on.
	Copes func(env value.Environ, name string) bool
	// Needs reports whether the program certainly ends in an environment because a
	// variable is not set.
	Needs func(env value.Environ, name string) bool
}

// Named is what the command names to be loaded, or FILE where that cannot be
// told.
func (s *Start) Named() string {
	if s.Target != nil {
		return s.Target.Named
	}
	for _, a := range s.Final.Args {
		if !strings.HasPrefix(a.Text, "-") {
			return a.Text
		}
	}
	return "FILE"
}

// Route is a path that the code answers.
type Route struct {
	Method string // GET, POST, …; any for all
	Path   string // * for every path
	At     place.Span
}

// Variable is a variable of the environment that the code reads.
type Variable struct {
	Name     string
	Required bool
	Fallback string
	HasFall  bool
	Tested   bool           // the code asks whether it is set
	Guards   []*value.Value // what must hold for it to be read
	At       place.Span
}

// Declared is a variable that a file of the tree says to exist.
type Declared struct {
	Name  string
	How   string // dotenv example, dotenv file, container file, process file, descriptor
	Valid bool   // a shell can set it
	At    place.Span
}

// Shipment is what of a component reaches a host by one route.
type Shipment struct {
	Route string // git, upload, image
	Root  string // the folder that is taken
	By    string // the container file, for images
	Files int
	Left  []Left
	Whole []string // dependency folders of this machine that go along
}

// Left is what stays behind.
type Left struct {
	Path  string // a folder ends in a slash
	Files int
	Why   string
	At    place.Span // the line that keeps it out
}

// Artefact is what a build makes.
type Artefact struct {
	Kind   string // files, jar, war, binary, assembly, release
	Path   string // where it is, in the tree; may hold a star
	Detail string // fat, thin, plain
	Build  string // the command that makes it
	At     place.Span
}

// Path is a path that stands in the source, as it is written.
type Path struct {
	Text string
	At   place.Span
}

// Import is an import of a package or of a file of the tree.
type Import struct {
	Module   string
	Package  string // the package that is needed; empty for files of the tree
	File     string // the file it leads to
	From     string
	Relative bool
	TypeOnly bool
	Optional bool
	Missing  bool   // a relative import that leads nowhere
	Case     string // the file that it would lead to if letter case did not count
	Standard bool
	At       place.Span
}

// Setting is a production setting and what it comes to.
type Setting struct {
	Framework string
	Name      string
	Value     *value.Value
	At        place.Span
	Module    string
}

// Secret is a literal that looks like a secret. Its text is not kept.
type Secret struct {
	Name     string
	Fallback bool // used only where the environment does not say
	Local    bool // serves local work only
	Guards   []*value.Value
	At       place.Span
}

// Descriptor is a file that tells a host how to run a component.
type Descriptor struct {
	File   string
	Format string // process file, container file, ...
	How    string // read, inferred, declared
	Image  *Image
	Procs  []Proc
	Err    *document.Error
}

// Proc is one process of a process file.
type Proc struct {
	Name, Command string
	NameAt, At    place.Span
}

// Image is what a container file says.
type Image struct {
	Bases   []Base
	Expose  []Expose
	Env     map[string]*value.Value
	EnvAt   map[string]place.Span
	Command command.Line
	Text    string
	At      place.Span // of the command
	HasCmd  bool

	Inherited bool // the command is the base image's
	Unknown   bool // there is none here, and the base image may have one

	Form    string // exec or shell
	WorkDir string
	Copies  []Copy
	Stages  []Stage // in the order of the file; the last is the image
	Runs    []Run
	Context string // the build context, a folder of the tree
	Problem string
	User    string // as whom it runs, as written; empty where the base decides
	UserAt  place.Span
}

// Base is a base image of a stage.
type Base struct {
	Name, Tag, Digest, Stage string
	Text                     string
	Unknown                  bool
	Final                    bool
	At                       place.Span
}

// Expose is a port that a container file declares.
type Expose struct {
	Port int
	At   place.Span
}

// Stage is a stage of a container file.
type Stage struct {
	Name   string // empty for one without a name
	Parent int    // the stage it is built on, -1 for an image from elsewhere
}

// Copy is a COPY or ADD from the build context.
type Copy struct {
	Sources   []string
	Dest      string
	Dir       string // the work folder at that point
	FromStage string // the name or number of a stage, or an image
	Stage     int    // the stage in which it stands
	Mode      string // the mode that the files get, as written
	At        place.Span
	Final     bool
}

// Run is a RUN of a container file.
type Run struct {
	Text  string
	Env   map[string]string
	At    place.Span
	Final bool
	Stage int
}

// Question is something that could not be told.
type Question struct {
	Question, Reason string
	At               place.Span
}

// Dep finds a dependency by name.
func (c *Component) Dep(name string) (Dependency, bool) {
	var dev *Dependency
	for i, d := range c.Dependencies {
		if d.Name == name {
			if !d.Dev {
				return d, true
			}
			dev = &c.Dependencies[i]
		}
	}
	for _, d := range c.Members {
		if d.Name == name {
			return d, true
		}
	}
	if dev != nil {
		return *dev, true
	}
	return Dependency{}, false
}

// Path joins a name to the component's folder.
func (c *Component) Path(name string) string {
	if c.Dir == "" {
		return name
	}
	return c.Dir + "/" + name
}
