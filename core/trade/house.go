package trade

import (
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/knot"
)

// Pulled is what a school's own pulls make of a knot's efficiency in one line.
type Pulled struct {
	Knot, Material string
	In             knot.In
	Value          evidence.Interval
	Dist           evidence.Dist
	Fails          knot.Fails
	// Slips: it was seen to slip so often that it counts as slipping in this line; Why says how
	// often. That it held on a bench, drawn steadily, lets it count as no surer than it did.
	Slips bool
	Why   string
	// Source says how many pulls, in words.
	Source string
}

// WithPulls lays own pulls over the catalogue: in such a line they count in the place of what
// it says. What else is known of the knots is shared with the original.
func (c *Catalogue) WithPulls(pulls []Pulled) *Catalogue {
	if len(pulls) == 0 {
		return c
	}
	out := *c
	out.Knots = slices.Clone(c.Knots)
	for _, p := range pulls {
		i := slices.IndexFunc(out.Knots, func(k *knot.Knot) bool { return k.ID == p.Knot })
		if i < 0 {
			continue
		}
		k := *out.Knots[i]
		in := p.In
		own := knot.Efficiency{Materials: []string{p.Material}, Value: p.Value, Tag: evidence.Yours, Source: p.Source, Fails: p.Fails, In: &in}.Measured(p.Dist)
		k.Efficiency = append([]knot.Efficiency{own}, k.Efficiency...)
		if p.Slips {
			k.Hold = append(slipping(&k, p), k.Hold...)
		}
		out.Knots[i] = &k
		out.Taught += "pulls:" + p.Knot + "/" + p.Material + "/" + p.Source + ";"
	}
	out.index()
	return &out
}

// slipping is what goes before a knot's classes of hold where it was seen to slip: those that
// cover the material, wet or dry as it was pulled put to slips, the other side as it was.
func slipping(k *knot.Knot, p Pulled) []knot.HoldClass {
	var out []knot.HoldClass
	for _, h := range k.Hold {
		if len(h.Materials) > 0 && !slices.Contains(h.Materials, p.Material) {
			continue
		}
		h.Materials, h.Tag, h.Why = []string{p.Material}, evidence.Yours, p.Why
		if p.In.Wet {
			h.Wet = knot.Slips
		} else {
			h.Dry = knot.Slips
		}
		out = append(out, h)
	}
	return out
}
