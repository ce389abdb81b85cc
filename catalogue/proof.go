package catalogue

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
	"oarweed/core/shape"
)

// Proof is what one closure of a drawing must be; empty fields are not checked.
type Proof struct {
	Closure string
	// Signs is the over and under of every crossing as recorded from the drawing, for
	// forms whose closures are blind to some of them; no closure then. It guards
	// against later changes and proves nothing by itself.
	Signs     string
	Linking   []int
	Alexander string
	Jones     string
	Origin    string
}

// Proofs gives the expected closures of a knot.
func (c *Catalogue) Proofs(id string) []Proof { return c.proofs[id] }

// Prove compares every closure of a drawing with what it must be, up to the
// mirror image of the whole.
func (c *Catalogue) Prove(id string) error {
	sh, err := c.Drawing(id)
	if err != nil || sh == nil {
		return err
	}
	var l problem.List
	if len(c.proofs[id]) == 0 {
		l.Add(id, "is drawn but has no proof", "say in proofs.yaml what its closures must be")
	}
	got := map[string]shape.Closure{}
	for _, x := range sh.Closures() {
		got[x.Name] = x
	}
	for _, want := range c.proofs[id] {
		x, ok := got[want.Closure]
		at := id + " " + want.Closure
		switch {
		case want.Signs != "":
			if s := sh.Signs(); s != want.Signs {
				l.Add(id, fmt.Sprintf("passes over and under %s, not %s", s, want.Signs), "trace it against how the knot is tied")
			}
		case !ok:
			l.Add(at, "is not a closure of this drawing", "correct proofs.yaml")
		case want.Alexander != "" && x.Alexander != want.Alexander:
			l.Add(at, fmt.Sprintf("Alexander polynomial is %s, not %s", x.Alexander, want.Alexander), "the drawing is another knot")
		case want.Jones != "" && !shape.SameUpToMirror(x.Jones, want.Jones):
			l.Add(at, fmt.Sprintf("Jones polynomial is %s, not %s", x.Jones, want.Jones), "the drawing is another knot")
		case want.Linking != nil && !slices.Equal(x.Linking, want.Linking) && !slices.Equal(x.Linking, negated(want.Linking)):
			l.Add(at, fmt.Sprintf("linking numbers are %v, not %v", x.Linking, want.Linking), "the drawing is another knot")
		}
	}
	return l.Err()
}

func negated(v []int) []int {
	out := make([]int, len(v))
	for i, x := range v {
		out[i] = -x
	}
	return out
}
