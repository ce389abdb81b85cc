package trade

import (
	"fmt"
	"slices"

	"oarweed/core/problem"
	"oarweed/core/shape/space"
	"oarweed/core/shape/tangle"
)

// Proof is what one closure of a drawing must be; empty fields are not checked.
type Proof struct {
	Closure   string
	Linking   []int
	Alexander string
	Jones     string
	Origin    string
}

// Proofs gives the expected closures of a knot.
func (d *Drawings) Proofs(id string) []Proof { return d.src.Proofs[id] }

// Prove compares every closure of a drawing with what it must be, up to the
// mirror image of the whole, and with its second drawing where it has one.
func (d *Drawings) Prove(id string) error {
	sh, err := d.Drawing(id)
	if err != nil || sh == nil {
		return err
	}
	var l problem.List
	if len(d.src.Proofs[id]) == 0 {
		l.Add(id, "is drawn but has no proof", "say in proofs.yaml what its closures must be")
	}
	got := map[string]tangle.Closure{}
	for _, x := range tangle.Of(sh) {
		got[x.Name] = x
	}
	for _, want := range d.src.Proofs[id] {
		x, ok := got[want.Closure]
		at := id + " " + want.Closure
		switch {
		case !ok:
			l.Add(at, "is not a closure of this drawing", "correct proofs.yaml")
		case want.Alexander != "" && x.Alexander != want.Alexander:
			l.Add(at, fmt.Sprintf("Alexander polynomial is %s, not %s", x.Alexander, want.Alexander), "the drawing is another knot")
		case want.Jones != "" && !tangle.SameUpToMirror(x.Jones, want.Jones):
			l.Add(at, fmt.Sprintf("Jones polynomial is %s, not %s", x.Jones, want.Jones), "the drawing is another knot")
		case want.Linking != nil && !slices.Equal(x.Linking, want.Linking) && !slices.Equal(x.Linking, negated(want.Linking)):
			l.Add(at, fmt.Sprintf("linking numbers are %v, not %v", x.Linking, want.Linking), "the drawing is another knot")
		}
	}
	l.Take(id, sh.Continuous())
	second, err := d.Model(id)
	if err != nil {
		return err
	}
	if second != nil {
		l.Take("", second.Matches(sh))
	}
	return l.Err()
}

// EndsNot says of which drawings drawing back does not tell the ends, and why.
type EndsNot struct {
	Alike map[string]string
	ByEye map[string]string `yaml:"by_eye"`
}

// Ends says whether drawing back tells the ends of a drawing, as its second drawing has them,
// and why not.
func (d *Drawings) Ends(id string) (space.Ends, string) {
	if why, ok := d.src.Ends.Alike[id]; ok {
		return space.Alike, why
	}
	if why, ok := d.src.Ends.ByEye[id]; ok {
		return space.ByEye, why
	}
	if d.src.Models[id] == "" {
		return space.ByEye, "it has no second drawing"
	}
	return space.Told, ""
}

// Model gives the second drawing of a knot, a model in space made from how it is
// tied; nil if it has none.
func (d *Drawings) Model(id string) (*space.Model, error) {
	text, ok := d.src.Models[id]
	if !ok {
		return nil, nil
	}
	s, err := space.Parse(text)
	if err != nil {
		return nil, fmt.Errorf("second/%s.space: %w", id, err)
	}
	return s, nil
}

func negated(v []int) []int {
	out := make([]int, len(v))
	for i, x := range v {
		out[i] = -x
	}
	return out
}
