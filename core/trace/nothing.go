package trace

import (
	"fmt"

	"ubique/core/code"
)

// ofNothing is what comes of asking nothing for a property: an error of the language.
// What this package does not know is never nothing.
func (m *machine) ofNothing(base any, name string, s *scope, n *code.Node) error {
	class, msg := "TypeError", fmt.Sprintf("Cannot read properties of %s (reading '%s')", show(base), name)
	switch {
	case s.python():
		class, msg = "AttributeError", fmt.Sprintf("'NoneType' object has no attribute '%s'", name)
	case !javascript(s.module.file.Lang):
		return giveUp("the property %s of nothing", name)
	}
	return certainly(class, msg)
}

// jsOwn are the names of the methods that texts, lists and numbers have (ECMA-262 2026,
// 22.1.3, 23.1.3, 21.1.3).
var jsOwn = words("at charAt charCodeAt codePointAt concat endsWith includes indexOf lastIndexOf localeCompare match matchAll normalize padEnd padStart repeat replace replaceAll search slice split startsWith substr substring toLocaleLowerCase toLocaleUpperCase toLowerCase toString toUpperCase trim trimEnd trimStart valueOf constructor copyWithin entries every fill filter find findIndex findLast findLastIndex flat flatMap forEach join keys map pop push reduce reduceRight reverse shift some sort splice toReversed toSorted toSpliced unshift values with toFixed toPrecision toExponential toLocaleString hasOwnProperty isPrototypeOf propertyIsEnumerable index input groups raw isWellFormed anchor")

// noFunction is what comes of a call of what is none.
func (m *machine) noFunction(fn any, at spot) error {
	text := at.f.Text(at.n.Kid(0))
	switch {
	case fn != nil && fn != any(undefined):
	case javascript(at.f.Lang):
		return certainly("TypeError", text+" is not a function")
	case at.f.Lang == code.Python && fn == nil:
		return certainly("TypeError", "'NoneType' object is not callable")
	}
	return giveUp("what is called is no function: %s", text)
}

// noItems is what comes of going through what has no items.
func noItems(v any, s *scope) error {
	switch {
	case v != nil && v != any(undefined):
	case javascript(s.module.file.Lang):
		return certainly("TypeError", show(v)+" is not iterable")
	case s.python() && v == nil:
		return certainly("TypeError", "'NoneType' object is not iterable")
	}
	return undecided("all of what is not known")
}

// needing are functions of Node.js that must be given what they are for (Node.js 24 API,
// "Errors", ERR_INVALID_ARG_TYPE; ECMA-262 2026, 20.1.2).
var needing = words("fs.readFileSync fs.readdirSync path.join path.resolve path.dirname path.basename path.extname path.normalize path.relative Buffer.from util.promisify Object.keys Object.values Object.entries")

// lacking reports whether such a function lacks it; path.join and path.resolve need every
// argument.
func lacking(p string, args []any) bool {
	if !needing[p] || len(args) == 0 {
		return false
	}
	for i, a := range args {
		if (a == nil || a == any(undefined)) && (i == 0 || p == "path.join" || p == "path.resolve") {
			return true
		}
	}
	return false
}

// pyNeeding are functions of Python that must be given what they are for (Python 3.14
// library reference).
var pyNeeding = words("int float len round sum sorted list tuple set dict frozenset iter enumerate reversed min max abs ord chr hex os.path.join os.path.exists os.path.isfile os.path.isdir os.path.dirname os.path.basename os.path.abspath os.path.expanduser os.path.realpath os.path.normpath os.path.splitext pathlib.Path pathlib.PurePath open io.open json.loads base64.b64decode base64.b64encode urllib.parse.quote urllib.parse.unquote ipaddress.ip_address")

// pyLacking reports whether such a function lacks it; os.path.join needs every argument.
func pyLacking(p string, args []any) bool {
	if len(args) > 1 && args[1] == nil && (p == "re.match" || p == "re.search" || p == "re.fullmatch" || p == "re.findall" || p == "re.split") {
		return true
	}
	if !pyNeeding[p] {
		return false
	}
	for i, a := range args {
		if a == nil && (i == 0 || p == "os.path.join" || p == "pathlib.Path") {
			return true
		}
	}
	return false
}

// mistaken is an error of values that do not go together: certain where they are simple
// ones, which this package knows all about.
func mistaken(a, b any, class, message string) error {
	for _, v := range []any{a, b} {
		switch v.(type) {
		case nil, bool, string, integer, float64, symbol, *list:
		default:
			return raise(class, message)
		}
	}
	return certainly(class, message)
}
