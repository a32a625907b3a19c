package survey

import (
	"ubique/core/trace"
	"ubique/core/value"
)

// runs are what came of a program under the environments that it was gone through
// with. One that says the same of all that the program asked leads to the same.
type runs []ran

type ran struct {
	env    value.Environ
	result *trace.Result
}

// under gives what comes of the program in an environment; it is gone through where
// that is not known yet.
func (r *runs) under(env value.Environ, through func() trace.Result) *trace.Result {
	for _, x := range *r {
		if x.result.Seen.Same(x.env, env) {
			return x.result
		}
	}
	got := through()
	*r = append(*r, ran{env, &got})
	return &got
}
