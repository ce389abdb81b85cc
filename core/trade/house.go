package trade

import (
	"fmt"
	"slices"

	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/problem"
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

// OwnWraps is how many wraps a school makes of a knot in lines of about one strength, since its
// own pulls say so.
type OwnWraps struct {
	Knot string  `json:"knot"`
	Lb   float64 `json:"lb" doc:"strength of the line that was pulled, lb"`
	N    int     `json:"n" minimum:"1" maximum:"40"`
}

// around is how far from that strength it counts: our own choice.
const around = 1.4

// Covers reports whether it is of a line of so many pounds.
func (o OwnWraps) Covers(lb float64) bool { return lb >= o.Lb/around && lb <= o.Lb*around }

// Check reports what cannot be, by field.
func (o OwnWraps) Check(c *Catalogue) error {
	var l problem.List
	if k := c.Knot(o.Knot); k == nil || k.Wraps == nil {
		l.Add("knot", fmt.Sprintf("%q is no knot whose wraps are the tyer's choice", o.Knot), "choose one with wraps")
	}
	if !(o.Lb > 0) {
		l.Add("lb", fmt.Sprintf("%g is no strength", o.Lb), "give pounds above 0")
	}
	if o.N < 1 || o.N > 40 {
		l.Add("n", fmt.Sprintf("%d is no number of wraps", o.N), "give 1 to 40")
	}
	return l.Err()
}

// WithWraps lays own counts over those of the catalogue, for lines of about that strength.
func (c *Catalogue) WithWraps(own []OwnWraps) *Catalogue {
	if len(own) == 0 {
		return c
	}
	out := *c
	out.Knots = slices.Clone(c.Knots)
	for _, o := range own {
		i := slices.IndexFunc(out.Knots, func(k *knot.Knot) bool { return k.ID == o.Knot && k.Wraps != nil })
		if i < 0 {
			continue
		}
		k, w := *out.Knots[i], *out.Knots[i].Wraps
		w.Rules = append([]knot.WrapRule{{FromLb: o.Lb / around, UpToLb: o.Lb * around, N: o.N}}, w.Rules...)
		k.Wraps = &w
		out.Knots[i] = &k
		out.Taught += fmt.Sprintf("wraps:%s/%g/%d;", o.Knot, o.Lb, o.N)
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
