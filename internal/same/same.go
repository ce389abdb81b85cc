// Package same compares documents in tests: what has changed between an answer and the one
// expected, place by place, instead of two screens of JSON.
package same

import (
	"encoding/json"
	"fmt"
	"math"
)

// Documents lists the places where got lacks or changes what want has. Documents may gain
// fields, and numbers may differ in the tenth figure: other processors round otherwise.
func Documents(name string, want, got []byte) []string {
	var w, g any
	if err := json.Unmarshal(want, &w); err != nil {
		return []string{name + ": expected: " + err.Error()}
	}
	if err := json.Unmarshal(got, &g); err != nil {
		return []string{name + ": " + err.Error()}
	}
	var out []string
	compare(name, w, g, &out)
	return out
}

func compare(at string, want, got any, out *[]string) {
	switch w := want.(type) {
	case map[string]any:
		g, ok := got.(map[string]any)
		if !ok {
			*out = append(*out, fmt.Sprintf("%s: %v instead of an object", at, got))
			return
		}
		for k := range w {
			compare(at+"."+k, w[k], g[k], out)
		}
	case []any:
		g, ok := got.([]any)
		if !ok || len(g) != len(w) {
			*out = append(*out, fmt.Sprintf("%s: %d entries instead of %d", at, len(g), len(w)))
			return
		}
		for i := range w {
			compare(fmt.Sprintf("%s[%d]", at, i), w[i], g[i], out)
		}
	case float64:
		g, ok := got.(float64)
		if !ok || math.Abs(g-w) > 1e-10*math.Max(1e-3, math.Abs(w)) {
			*out = append(*out, fmt.Sprintf("%s: %v instead of %v", at, got, w))
		}
	default:
		if want != got {
			*out = append(*out, fmt.Sprintf("%s: %v instead of %v", at, got, want))
		}
	}
}
