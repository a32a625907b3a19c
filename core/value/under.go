package value

import (
	"encoding/json"
	"math"
	"net/netip"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Outcome is what a value comes to under an environment.
type Outcome struct {
	Kind  Kind // Unknown, Str, Num, Bool, Null, Undef, List, Object, External
	Text  string
	Num   float64 // NaN for not-a-number
	List  []Outcome
	Raise bool // an exception: the program ends here unless it is caught
	Ends  bool // with Raise: an error that nothing catches
}

func raise(why string) Outcome  { return Outcome{Kind: Unknown, Text: why, Raise: true} }
func dontKnow(w string) Outcome { return Outcome{Kind: Unknown, Text: w} }

func str(s string) Outcome {
	if len(s) > maxText {
		return dontKnow(tooLong)
	}
	return Outcome{Kind: Str, Text: s}
}

func num(n float64) Outcome    { return Outcome{Kind: Num, Num: n} }
func truth(b bool) Outcome     { return Outcome{Kind: Bool, Num: map[bool]float64{true: 1}[b]} }
func (o Outcome) isNaN() bool  { return o.Kind == Num && math.IsNaN(o.Num) }
func (o Outcome) Absent() bool { return o.Kind == Undef && o.Text == absent } // an argument that is not given at all
func (o Outcome) Known() bool  { return o.Kind != Unknown }

// fromCall tells what a call of a package gives: something, and nobody knows what.
func (o Outcome) fromCall() bool { return o.Kind == External && strings.Contains(o.Text, "()") }

func (o Outcome) nothing() bool  { return o.Kind == Null || o.Kind == Undef }
func (o Outcome) String() string { return o.show(false) }

func (o Outcome) show(py bool) string {
	switch o.Kind {
	case Str:
		return o.Text
	case Num:
		if o.isNaN() {
			return "NaN"
		}
		return strconv.FormatFloat(o.Num, 'f', -1, 64)
	case Bool:
		if py {
			return map[bool]string{true: "True", false: "False"}[o.Num != 0]
		}
		return strconv.FormatBool(o.Num != 0)
	case Null:
		if py {
			return "None"
		}
		return "null"
	case Undef:
		return "undefined"
	}
	return ""
}

// Truth says whether the outcome counts as true; ok is false when unknown.
func (o Outcome) Truth(py bool) (yes, ok bool) {
	switch o.Kind {
	case Str:
		return o.Text != "", true
	case Num:
		return o.Num != 0 && (py || !o.isNaN()), true
	case Bool:
		return o.Num != 0, true
	case Null, Undef:
		return false, true
	case List:
		return !py || len(o.List) > 0, true
	case External:
		return true, !o.fromCall() // what a call of a package gives is not known
	case Func, Class, Instance, Module, Object, EnvMap:
		return true, true
	}
	return false, false
}

const (
	maxUnder = 400
	maxSteps = 100_000
)

// Under gives what the value comes to in an environment.
func (v *Value) Under(env Environ) Outcome { return (&evaluation{env: env}).under(v, 0) }

// evaluation is one evaluation under an environment. It counts its steps: a
// value whose parts are shared can be far larger than what it is made of.
type evaluation struct {
	env   Environ
	steps int
}

func (u *evaluation) under(v *Value, depth int) Outcome {
	if v == nil {
		return Outcome{Kind: Undef}
	}
	if u.steps++; depth > maxUnder || u.steps > maxSteps {
		return dontKnow("nested too deep")
	}
	env := u.env
	switch v.Kind {
	case Str:
		return str(v.Text)
	case Num:
		return num(v.Num)
	case Bool:
		return truth(v.Num != 0)
	case Null, Undef:
		return Outcome{Kind: v.Kind, Text: v.Text}
	case Env:
		if s, ok := env.Lookup(v.Text, v.Fold); ok {
			return str(s)
		}
		if env.Open {
			return dontKnow("decided by the variable " + v.Text)
		}
		switch v.Unset {
		case ReadsNull:
			return Outcome{Kind: Null}
		case Raises:
			if v.Text == "\x00" { // no variable has this name
				return raise("a value that its schema does not take")
			}
			return raise(v.Text + " is not set")
		case ReadsEmpty:
			return str("")
		}
		return Outcome{Kind: Undef}
	case List:
		o := Outcome{Kind: List}
		for _, k := range v.Kids {
			o.List = append(o.List, u.under(k, depth+1))
		}
		return o
	case Cond:
		t := u.under(v.Kids[0], depth+1)
		if t.Raise {
			return t
		}
		yes, ok := t.Truth(v.Py)
		if !ok {
			a, b := u.under(v.Kids[1], depth+1), u.under(v.Kids[2], depth+1)
			if a.Known() && equal(a, b) && a.Kind == b.Kind {
				return a
			}
			return dontKnow(firstOf(t.Text, "a condition that is not known here"))
		}
		if yes {
			return u.under(v.Kids[1], depth+1)
		}
		return u.under(v.Kids[2], depth+1)
	case Op:
		return u.operate(v, depth)
	case Unknown:
		return dontKnow(v.Text)
	case External:
		return Outcome{Kind: External, Text: v.Text}
	}
	return Outcome{Kind: v.Kind}
}

// Made gives the part of a value that it comes to in an environment: the
// literal or the variable at the end of the conditions and fallbacks. Where
// several parts are put together it is the first that is no text of its own.
func (v *Value) Made(env Environ) *Value { return v.made(env, false) }

// MadeLast is Made for the end of a text that is put together.
func (v *Value) MadeLast(env Environ) *Value { return v.made(env, true) }

func (v *Value) made(env Environ, last bool) *Value {
	u := &evaluation{env: env}
	for depth := 0; depth < maxUnder; depth++ {
		switch {
		case v.Kind == Cond:
			yes, ok := u.under(v.Kids[0], depth).Truth(v.Py)
			if !ok {
				return v
			}
			if yes {
				v = v.Kids[1]
			} else {
				v = v.Kids[2]
			}
		case v.Kind != Op || len(v.Kids) == 0:
			return v
		case v.Text == "||", v.Text == "&&", v.Text == "??", v.Text == "unset", v.Text == "catch":
			a := u.under(v.Kids[0], depth)
			yes, _ := a.Truth(v.Py)
			first := map[string]bool{"||": yes, "&&": !yes, "??": !a.nothing(), "catch": !a.Raise, "unset": a.Known() && !a.nothing()}[v.Text]
			if first || len(v.Kids) < 2 {
				v = v.Kids[0]
			} else {
				v = v.Kids[1]
			}
		default:
			next := v.Kids[0]
			for _, k := range v.Kids {
				if k.Kind != Str {
					next = k
					break
				}
			}
			if last && (v.Text == "concat" || v.Text == "+") {
				next = v.Kids[len(v.Kids)-1]
			}
			v = next
		}
	}
	return v
}

func firstOf(a, b string) string {
	if a != "" {
		return a
	}
	return b
}

func equal(a, b Outcome) bool {
	switch a.Kind {
	case Str:
		return b.Kind == Str && a.Text == b.Text
	case Num, Bool:
		return (b.Kind == Num || b.Kind == Bool) && a.Num == b.Num
	case Null, Undef:
		return b.Kind == Null || b.Kind == Undef
	}
	return false
}

func (u *evaluation) operate(v *Value, depth int) Outcome {
	env := u.env
	arg := func(i int) Outcome {
		if i < len(v.Kids) {
			return u.under(v.Kids[i], depth+1)
		}
		return Outcome{Kind: Undef}
	}
	switch v.Text {
	case "||", "&&":
		a := arg(0)
		if a.Raise {
			return a
		}
		yes, ok := a.Truth(v.Py)
		if !ok {
			return a
		}
		if yes == (v.Text == "||") {
			return a
		}
		return arg(1)
	case "??":
		a := arg(0)
		if a.nothing() {
			return arg(1)
		}
		return a
	case "unset": // shell's ${x-y}
		if k := v.Kids[0]; k.Kind == Env {
			if _, ok := env.Lookup(k.Text, k.Fold); !ok && !env.Open {
				return arg(1)
			}
		}
		return arg(0)
	case "isset":
		if k := v.Kids[0]; k.Kind == Env {
			if _, ok := env.Lookup(k.Text, k.Fold); ok || !env.Open {
				return truth(ok)
			}
		}
		return dontKnow("whether a variable is set")
	case "worker":
		return truth(env.Worker)
	case "max", "min":
		best := arg(0)
		for i := 1; i < len(v.Kids); i++ {
			if o := arg(i); best.Known() && o.Known() && (toNumber(o) > toNumber(best)) == (v.Text == "max") {
				best = o
			} else if !o.Known() {
				best = o
			}
		}
		return best
	case "catch":
		a := arg(0)
		if a.Raise && !a.Ends {
			return arg(1)
		}
		return a
	case "unwrap": // what is in a result or an option: an error or nothing ends the program
		a := arg(0)
		if a.Known() && a.nothing() {
			a = raise("there is no value")
		}
		a.Ends = a.Raise
		return a
	case "holds": // a result that is no error, an option that is not empty
		a := arg(0)
		if a.Ends {
			return a
		}
		if a.Raise || a.Known() {
			return truth(!a.Raise && !a.nothing())
		}
		return a
	case "concat":
		var b strings.Builder
		for i := range v.Kids {
			o := arg(i)
			if !o.Known() {
				return o
			}
			switch o.Kind {
			case External, Func, Instance, Module, Class, EnvMap, Object:
				return dontKnow(firstOf(o.Text, "something that is not followed"))
			}
			b.WriteString(o.show(v.Py))
			if b.Len() > maxText {
				return dontKnow(tooLong)
			}
		}
		return str(b.String())
	case "replaceall", "replacefirst":
		a, old, to := arg(0), arg(1), arg(2)
		switch {
		case !a.Known():
			return a
		case a.nothing():
			return raise("nothing is replaced in")
		case v.Text == "replacefirst":
			return str(strings.Replace(a.show(v.Py), old.Text, to.Text, 1))
		}
		return str(strings.ReplaceAll(a.show(v.Py), old.Text, to.Text))
	case "substitute":
		a := arg(0)
		re, err := regexp.Compile(v.Kids[1].Text)
		switch {
		case !a.Known():
			return a
		case a.nothing():
			return raise("nothing is replaced in")
		case err != nil:
			return dontKnow("a regular expression")
		case v.Num == 1:
			return str(re.ReplaceAllLiteralString(a.show(v.Py), v.Kids[2].Text))
		}
		in := a.show(v.Py)
		if m := re.FindStringIndex(in); m != nil {
			in = in[:m[0]] + v.Kids[2].Text + in[m[1]:]
		}
		return str(in)
	case "jsonfield":
		return u.jsonField(v, depth)
	case "loop": // one of several, or all: not known which
		return dontKnow("made in a loop")
	}
	a := arg(0)
	if a.Raise {
		return a
	}
	if !a.Known() {
		return a
	}
	switch a.Kind {
	case External, Func, Instance, Module, Class, EnvMap:
		switch v.Text {
		case "!", "Boolean", "nothing", "rubytrue", "typeof", "empty", "blank":
		case "==", "!=", "===", "!==":
			b := arg(1)
			if b.Known() && b.nothing() { // it is something
				return truth(v.Text[0] == '!')
			}
			if a.Kind == External && b.Kind == External && strings.HasPrefix(a.Text, "enum ") && strings.HasPrefix(b.Text, "enum ") {
				return truth((a.Text == b.Text) == (v.Text[0] == '='))
			}
			return dontKnow(firstOf(a.Text, "something that is not followed"))
		default: // what a conversion makes of it is not known
			return dontKnow(firstOf(a.Text, "something that is not followed"))
		}
	}
	b := Outcome{Kind: Undef}
	if len(v.Kids) > 1 {
		if b = arg(1); !b.Known() {
			return b
		}
		if b.fromCall() || b.Kind == External && !comparing[v.Text] {
			return dontKnow(b.Text)
		}
		if made := []Kind{List, Object}; slices.Contains(made, a.Kind) && slices.Contains(made, b.Kind) {
			switch v.Text {
			case "==", "!=", "===", "!==":
				return dontKnow("whether two things are the same")
			}
		}
	}
	if f, ok := operators[v.Text]; ok {
		return f(a, b, v.Py)
	}
	return dontKnow("what " + v.Text + " gives")
}

// comparing are the operators that ask whether two things are the same.
var comparing = map[string]bool{"==": true, "!=": true, "===": true, "!==": true, "in": true}

// ToNumber converts a text as JavaScript's Number() does.
func ToNumber(s string) float64 { return toNumber(Outcome{Kind: Str, Text: s}) }

// toNumber converts as JavaScript's Number() does (ECMA-262, 7.1.4).
func toNumber(o Outcome) float64 {
	switch o.Kind {
	case Num, Bool:
		return o.Num
	case Null:
		return 0
	case Str:
		s := strings.TrimSpace(o.Text)
		if s == "" {
			return 0
		}
		if n, err := strconv.ParseInt(s, 0, 64); err == nil && !strings.ContainsAny(s, "_") && (len(s) < 2 || s[0] != '0' || strings.ContainsAny(s, "xXoObB")) {
			return float64(n)
		}
		if f, err := strconv.ParseFloat(s, 64); err == nil && !strings.ContainsAny(s, "_xXpPnN") {
			return f
		}
	}
	return math.NaN()
}

// parseInt converts as JavaScript's parseInt does (ECMA-262, 19.2.5).
func parseInt(o Outcome, base Outcome) float64 {
	s := strings.TrimSpace(o.show(false))
	radix := 10
	if base.Kind == Num && base.Num >= 2 && base.Num <= 36 {
		radix = int(base.Num)
	}
	sign := 1.0
	if s != "" && (s[0] == '-' || s[0] == '+') {
		if s[0] == '-' {
			sign = -1
		}
		s = s[1:]
	}
	if (radix == 16 || base.Kind == Undef) && (strings.HasPrefix(s, "0x") || strings.HasPrefix(s, "0X")) {
		s, radix = s[2:], 16
	}
	end := 0
	for end < len(s) {
		if _, err := strconv.ParseUint(s[end:end+1], radix, 8); err != nil {
			break
		}
		end++
	}
	n, err := strconv.ParseUint(s[:end], radix, 63)
	if err != nil {
		return math.NaN()
	}
	return sign * float64(n)
}

func compare(a, b Outcome, py bool) (float64, bool) {
	if a.Kind == Str && b.Kind == Str {
		return float64(strings.Compare(a.Text, b.Text)), true
	}
	x, y := toNumber(a), toNumber(b)
	if math.IsNaN(x) || math.IsNaN(y) {
		return 0, false
	}
	return x - y, true
}

func looseEqual(a, b Outcome) bool {
	if equal(a, b) {
		return true
	}
	if (a.Kind == Num || a.Kind == Bool) && b.Kind == Str || a.Kind == Str && (b.Kind == Num || b.Kind == Bool) {
		return toNumber(a) == toNumber(b)
	}
	return false
}

func strictEqual(a, b Outcome) bool {
	if a.Kind == External && b.Kind == External {
		return a.Text == b.Text
	}
	return a.Kind == b.Kind && equal(a, b)
}

type operator func(a, b Outcome, py bool) Outcome

func arithmetic(f func(x, y float64) float64) operator {
	return func(a, b Outcome, py bool) Outcome {
		if py && (a.Kind == Str || b.Kind == Str) {
			return raise("text where a number is needed")
		}
		if a.Kind == List || a.Kind == Object || b.Kind == List || b.Kind == Object { // sets and dates among them
			return dontKnow("what is computed with it")
		}
		return num(f(toNumber(a), toNumber(b)))
	}
}

func textOp(f func(string) string) operator {
	return func(a, _ Outcome, py bool) Outcome {
		if a.nothing() {
			return raise("a method of nothing is called")
		}
		return str(f(a.show(py)))
	}
}

// typeNames are what typeof says of what a value is (ECMAScript 2026, 13.5.3).
var typeNames = map[Kind]string{Str: "string", Num: "number", Bool: "boolean", Undef: "undefined", Null: "object", Object: "object", List: "object",
	EnvMap: "object", Instance: "object", Func: "function", Class: "function"}

// operators are the operations on known operands. Names of operators are
// JavaScript's; the meaning follows the language where they differ.
var operators = map[string]operator{
	"!": func(a, _ Outcome, py bool) Outcome {
		yes, ok := a.Truth(py)
		if !ok {
			return a
		}
		return truth(!yes)
	},
	"==": func(a, b Outcome, py bool) Outcome {
		if py {
			return truth(equal(a, b))
		}
		return truth(looseEqual(a, b))
	},
	"!=": func(a, b Outcome, py bool) Outcome {
		if py {
			return truth(!equal(a, b))
		}
		return truth(!looseEqual(a, b))
	},
	"===": func(a, b Outcome, _ bool) Outcome { return truth(strictEqual(a, b)) },
	"!==": func(a, b Outcome, _ bool) Outcome { return truth(!strictEqual(a, b)) },
	"<":   func(a, b Outcome, py bool) Outcome { c, ok := compare(a, b, py); return truth(ok && c < 0) },
	">":   func(a, b Outcome, py bool) Outcome { c, ok := compare(a, b, py); return truth(ok && c > 0) },
	"<=":  func(a, b Outcome, py bool) Outcome { c, ok := compare(a, b, py); return truth(ok && c <= 0) },
	">=":  func(a, b Outcome, py bool) Outcome { c, ok := compare(a, b, py); return truth(ok && c >= 0) },
	"in": func(a, b Outcome, _ bool) Outcome {
		switch b.Kind {
		case List:
			open := ""
			for _, x := range b.List {
				switch {
				case !x.Known() || x.fromCall():
					open = firstOf(x.Text, "an item of a list")
				case equal(a, x):
					return truth(true)
				}
			}
			if open != "" {
				return dontKnow(open)
			}
			return truth(false)
		case Str:
			return truth(strings.Contains(b.Text, a.Text))
		}
		return dontKnow("what it is looked for in")
	},
	"+": func(a, b Outcome, py bool) Outcome {
		if a.Kind == Str || b.Kind == Str {
			if py && a.Kind != b.Kind {
				return raise("text and a number are added")
			}
			return str(a.show(py) + b.show(py))
		}
		if a.Kind == List && b.Kind == List {
			return Outcome{Kind: List, List: append(append([]Outcome(nil), a.List...), b.List...)}
		}
		return num(toNumber(a) + toNumber(b))
	},
	"-":  arithmetic(func(x, y float64) float64 { return x - y }),
	"*":  arithmetic(func(x, y float64) float64 { return x * y }),
	"/":  arithmetic(func(x, y float64) float64 { return x / y }),
	"//": arithmetic(func(x, y float64) float64 { return math.Floor(x / y) }),
	"%":  arithmetic(math.Mod),
	"^":  arithmetic(func(x, y float64) float64 { return float64(int32(nanZero(x)) ^ int32(nanZero(y))) }),
	"|":  arithmetic(func(x, y float64) float64 { return float64(int32(nanZero(x)) | int32(nanZero(y))) }),
	"neg": func(a, _ Outcome, _ bool) Outcome {
		return num(-toNumber(a))
	},
	"Number":   func(a, _ Outcome, _ bool) Outcome { return num(toNumber(a)) },
	"parseInt": func(a, b Outcome, _ bool) Outcome { return num(parseInt(a, b)) },
	"isNaN":    func(a, _ Outcome, _ bool) Outcome { return truth(math.IsNaN(toNumber(a))) },
	"Number.isNaN": func(a, _ Outcome, _ bool) Outcome {
		return truth(a.isNaN())
	},
	"Number.isInteger": func(a, _ Outcome, _ bool) Outcome {
		return truth(a.Kind == Num && a.Num == math.Trunc(a.Num))
	},
	"Number.isFinite": func(a, _ Outcome, _ bool) Outcome { return truth(a.Kind == Num && !a.isNaN() && !math.IsInf(a.Num, 0)) },
	"typeof": func(a, _ Outcome, _ bool) Outcome {
		if name := typeNames[a.Kind]; name != "" {
			return str(name)
		}
		return dontKnow(firstOf(a.Text, "the type of something that is not followed"))
	},
	"String": func(a, _ Outcome, py bool) Outcome { return str(a.show(py)) },
	"Boolean": func(a, _ Outcome, py bool) Outcome {
		yes, ok := a.Truth(py)
		if !ok {
			return a
		}
		return truth(yes)
	},
	// strict and port are numbers as libraries for settings check them: what
	// is no number (or no port) ends the program.
	"strict": func(a, _ Outcome, _ bool) Outcome {
		n := toNumber(a)
		if math.IsNaN(n) || a.Kind == Str && strings.TrimSpace(a.Text) == "" {
			return raise("not a number: " + strconv.Quote(a.show(false)))
		}
		return num(n)
	},
	"port": func(a, _ Outcome, _ bool) Outcome {
		if n := toNumber(a); n >= 1 && n <= 65535 && n == math.Trunc(n) && (a.Kind != Str || strings.TrimSpace(a.Text) != "") {
			return num(n)
		}
		return raise("not a port: " + strconv.Quote(a.show(false)))
	},
	"int":   pyInt,
	"float": pyFloat,
	"strip": textOp(strings.TrimSpace),
	"lower": textOp(strings.ToLower),
	"upper": textOp(strings.ToUpper),
	"title": textOp(func(s string) string {
		return strings.ToUpper(s[:min(1, len(s))]) + strings.ToLower(s[min(1, len(s)):])
	}),
	// wholenumber is a whole number as Java, Rust and their like read it: a sign
	// and digits, and nothing else.
	"wholenumber": func(a, _ Outcome, _ bool) Outcome {
		if a.Kind == Num {
			return a
		}
		if a.Kind != Str {
			return raise("a number is made of nothing")
		}
		n, err := strconv.ParseInt(a.Text, 10, 64)
		if err != nil {
			return raise("not a number: " + strconv.Quote(a.Text))
		}
		return num(float64(n))
	},
	"rubytrue": func(a, _ Outcome, _ bool) Outcome { return truth(!a.nothing() && !(a.Kind == Bool && a.Num == 0)) },
	"url port": func(a, _ Outcome, _ bool) Outcome {
		u, err := url.Parse(a.Text)
		if err != nil || u.Scheme == "" {
			return raise("no address: " + strconv.Quote(a.Text))
		}
		if u.Scheme == "http" && u.Port() == "80" || u.Scheme == "https" && u.Port() == "443" {
			return str("")
		}
		return str(u.Port())
	},
	"url hostname": func(a, _ Outcome, _ bool) Outcome {
		u, err := url.Parse(a.Text)
		if err != nil || u.Scheme == "" {
			return raise("no address: " + strconv.Quote(a.Text))
		}
		return str(u.Hostname())
	},
	"nothing": func(a, _ Outcome, _ bool) Outcome { return truth(a.nothing()) },
	"empty": func(a, _ Outcome, _ bool) Outcome {
		return truth(a.nothing() || a.Kind == Str && a.Text == "" || a.Kind == List && len(a.List) == 0)
	},
	"blank": func(a, _ Outcome, _ bool) Outcome {
		return truth(a.nothing() || a.Kind == Str && strings.TrimSpace(a.Text) == "")
	},
	"digits": func(a, _ Outcome, _ bool) Outcome {
		return truth(a.Text != "" && strings.Trim(a.Text, "0123456789") == "")
	},
	"integer": func(a, _ Outcome, _ bool) Outcome {
		_, err := strconv.ParseInt(strings.TrimSpace(a.show(false)), 10, 64)
		return truth(err == nil)
	},
	// rustparse is what parse() gives where a number, an address of a host or
	// one with a port is wanted: the type is not followed.
	"rustparse": func(a, _ Outcome, _ bool) Outcome {
		if a.Kind == Num || a.Kind == Bool || a.nothing() || a.Kind == List {
			return a
		}
		if n, err := strconv.ParseUint(strings.TrimPrefix(a.Text, "+"), 10, 16); err == nil {
			return num(float64(n))
		}
		if strings.ContainsAny(a.Text, ".:") || a.Text == "true" || a.Text == "false" {
			_, socket := netip.ParseAddrPort(a.Text)
			_, host := netip.ParseAddr(a.Text)
			if socket == nil || host == nil || a.Text == "true" || a.Text == "false" {
				return a
			}
		}
		return raise("not read: " + strconv.Quote(a.Text))
	},
	"rustdefault": func(_, b Outcome, _ bool) Outcome {
		if b.Num != 0 {
			return num(0)
		}
		return str("")
	},
	// dotnetvalue is a setting as a number, or as it is where it is none.
	"dotnetvalue": func(a, _ Outcome, _ bool) Outcome {
		if a.Kind == Str {
			if n, err := strconv.ParseInt(strings.TrimSpace(a.Text), 10, 64); err == nil {
				return num(float64(n))
			}
		}
		return a
	},
	"match": func(a, b Outcome, _ bool) Outcome {
		if a.nothing() {
			return raise("a method of nothing is called")
		}
		re, err := regexp.Compile(b.Text)
		if err != nil {
			return dontKnow("a regular expression")
		}
		m := re.FindStringSubmatchIndex(a.show(false))
		if m == nil {
			return Outcome{Kind: Null}
		}
		o := Outcome{Kind: List}
		for i := 0; i+1 < len(m); i += 2 {
			if m[i] < 0 {
				o.List = append(o.List, Outcome{Kind: Undef})
				continue
			}
			o.List = append(o.List, str(a.show(false)[m[i]:m[i+1]]))
		}
		return o
	},
	"astext": func(a, _ Outcome, _ bool) Outcome {
		switch {
		case a.nothing() || a.Kind == Bool && a.Num == 0:
			return str("")
		case a.Kind == Bool:
			return str("1")
		}
		return a
	},
	"istext":   func(a, _ Outcome, _ bool) Outcome { return truth(a.Kind == Str) },
	"isnumber": func(a, _ Outcome, _ bool) Outcome { return truth(a.Kind == Num) },
	"truthy":   pyBool,
	"json":     fromJSON,
	"startswith": func(a, b Outcome, _ bool) Outcome {
		return truth(a.Kind == Str && b.Kind == Str && strings.HasPrefix(a.Text, b.Text))
	},
	"endswith": func(a, b Outcome, _ bool) Outcome {
		return truth(a.Kind == Str && b.Kind == Str && strings.HasSuffix(a.Text, b.Text))
	},
	"removeprefix": func(a, b Outcome, _ bool) Outcome { return cutText(a, b, strings.TrimPrefix) },
	"removesuffix": func(a, b Outcome, _ bool) Outcome { return cutText(a, b, strings.TrimSuffix) },
	"from": func(a, b Outcome, _ bool) Outcome { // all from one place on
		n := int(b.Num)
		switch {
		case a.nothing():
			return raise("nothing is cut")
		case a.Kind == List:
			if n < 0 {
				n = max(0, len(a.List)+n)
			}
			return Outcome{Kind: List, List: a.List[min(n, len(a.List)):]}
		}
		text := []rune(a.show(true))
		if n < 0 {
			n = max(0, len(text)+n)
		}
		return str(string(text[min(n, len(text)):]))
	},
	"length": func(a, _ Outcome, _ bool) Outcome {
		switch a.Kind {
		case List:
			return num(float64(len(a.List)))
		case Str:
			return num(float64(len([]rune(a.Text))))
		}
		return dontKnow("how many there are")
	},
	"partition": func(a, b Outcome, _ bool) Outcome {
		if a.nothing() {
			return raise("nothing is split")
		}
		before, after, found := strings.Cut(a.Text, b.Text)
		if !found {
			return Outcome{Kind: List, List: []Outcome{str(before), str(""), str("")}}
		}
		return Outcome{Kind: List, List: []Outcome{str(before), str(b.Text), str(after)}}
	},
	"rpartition": func(a, b Outcome, _ bool) Outcome {
		if a.nothing() {
			return raise("nothing is split")
		}
		i := strings.LastIndex(a.Text, b.Text)
		if i < 0 {
			return Outcome{Kind: List, List: []Outcome{str(""), str(""), str(a.Text)}}
		}
		return Outcome{Kind: List, List: []Outcome{str(a.Text[:i]), str(b.Text), str(a.Text[i+len(b.Text):])}}
	},
	"split": func(a, b Outcome, py bool) Outcome {
		if a.nothing() {
			return raise("nothing is split")
		}
		o := Outcome{Kind: List}
		parts := strings.Split(a.Text, b.Text)
		if b.Kind != Str {
			if parts = []string{a.Text}; py {
				parts = strings.Fields(a.Text)
			}
		}
		for _, p := range parts {
			o.List = append(o.List, str(p))
		}
		return o
	},
	"list": func(a, _ Outcome, _ bool) Outcome { // a comma-separated list, empty for none
		o := Outcome{Kind: List}
		if a.Kind == List {
			return a
		}
		for _, p := range strings.Split(a.Text, ",") {
			if p = strings.TrimSpace(p); p != "" {
				o.List = append(o.List, str(p))
			}
		}
		return o
	},
	"index": func(a, b Outcome, _ bool) Outcome {
		if a.Kind == List && b.Kind == Num {
			i := int(b.Num)
			if i < 0 {
				i += len(a.List)
			}
			if i >= 0 && i < len(a.List) {
				return a.List[i]
			}
			return Outcome{Kind: Undef}
		}
		return dontKnow("an element that is not known")
	},
}

func nanZero(x float64) float64 {
	if math.IsNaN(x) || math.IsInf(x, 0) {
		return 0
	}
	return x
}

// pyInt converts as Python's int() does; it raises where that would.
func pyInt(a, b Outcome, _ bool) Outcome {
	switch a.Kind {
	case Num, Bool:
		return num(math.Trunc(a.Num))
	case Str:
		base := 10
		if b.Kind == Num {
			base = int(b.Num)
		}
		if base != 0 && (base < 2 || base > 36) {
			return raise("int() gets a base that is none")
		}
		if n, err := strconv.ParseInt(strings.TrimSpace(a.Text), base, 64); err == nil {
			return num(float64(n))
		}
		return raise("int() gets " + strconv.Quote(a.Text))
	}
	if a.Kind == External {
		return dontKnow("the number that " + a.Text + " gives")
	}
	return raise("int() gets nothing")
}

func pyFloat(a, _ Outcome, _ bool) Outcome {
	switch a.Kind {
	case Num, Bool:
		return num(a.Num)
	case Str:
		if f, err := strconv.ParseFloat(strings.TrimSpace(a.Text), 64); err == nil {
			return num(f)
		}
	}
	return raise("float() gets what is no number")
}

// pyBool reads the words that settings libraries take for true and false.
func pyBool(a, _ Outcome, _ bool) Outcome {
	switch a.Kind {
	case Bool, Num:
		return truth(a.Num != 0)
	case Null, Undef:
		return truth(false)
	case Str:
		switch strings.ToLower(strings.TrimSpace(a.Text)) {
		case "1", "true", "t", "yes", "y", "on", "ok":
			return truth(true)
		case "0", "false", "f", "no", "n", "off", "":
			return truth(false)
		}
		return raise("no boolean: " + strconv.Quote(a.Text))
	}
	return a
}

// cutText takes a text off one end of another.
func cutText(a, b Outcome, f func(string, string) string) Outcome {
	if a.nothing() {
		return raise("nothing is cut")
	}
	return str(f(a.show(true), b.Text))
}

// jsonField reads a field of a text of JSON, under the names that lead to it.
func (u *evaluation) jsonField(v *Value, depth int) Outcome {
	var names []string
	for v.Text == "jsonfield" && v.Kind == Op {
		names = append([]string{v.Kids[1].Text}, names...)
		v = v.Kids[0]
	}
	if len(v.Kids) == 0 {
		return dontKnow("parsed from JSON")
	}
	source := u.under(v.Kids[0], depth+1)
	if !source.Known() || source.Kind != Str {
		return source
	}
	var doc any
	if err := json.Unmarshal([]byte(source.Text), &doc); err != nil {
		return raise("what is parsed is no JSON")
	}
	for _, name := range names {
		switch x := doc.(type) {
		case map[string]any:
			doc = x[name]
		case []any:
			i, err := strconv.Atoi(name)
			if err != nil || i < 0 || i >= len(x) {
				return Outcome{Kind: Undef}
			}
			doc = x[i]
		default:
			return Outcome{Kind: Undef}
		}
	}
	switch x := doc.(type) {
	case nil:
		return Outcome{Kind: Undef}
	case string:
		return str(x)
	case float64:
		return num(x)
	case bool:
		return truth(x)
	}
	return dontKnow("parsed from JSON")
}

func fromJSON(a, _ Outcome, _ bool) Outcome {
	switch s := strings.TrimSpace(a.Text); s {
	case "true", "false":
		return truth(s == "true")
	case "null":
		return Outcome{Kind: Null}
	default:
		if f, err := strconv.ParseFloat(s, 64); err == nil {
			return num(f)
		}
		if u, err := strconv.Unquote(s); err == nil && strings.HasPrefix(s, `"`) {
			return str(u)
		}
	}
	return dontKnow("parsed from JSON")
}
