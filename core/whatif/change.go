// Package whatif asks of a rig with one joint what would change its first choice: at
// which value of a number, under which other condition ([Changes]), and over a plane
// of two numbers ([Map]).
package whatif

import (
	"cmp"
	"context"
	"math"
	"slices"

	"oarweed/core/line"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// Change says at which value of an input, or under which condition, another knot
// comes first.
type Change struct {
	// Input is turned From the value now To where the first choice changes, Up or
	// down; nil for a condition that is not a number.
	Input    *rig.Input
	From, To float64
	Up       bool
	// Condition that differs; nil for a number.
	Condition *Condition
	// Knot comes first beyond; empty if none will do.
	Knot string
}

// Nearest gives the places of at most n changes in the list: the numbers that have to move
// least, by factor, then conditions, which count as a number doubled; each knot once while
// there are others.
func Nearest(list []Change, n int) []int {
	far := func(i int) float64 {
		if c := list[i]; c.From > 0 {
			return math.Abs(math.Log(c.To / c.From))
		}
		return math.Ln2
	}
	sorted := make([]int, len(list))
	for i := range list {
		sorted[i] = i
	}
	slices.SortStableFunc(sorted, func(a, b int) int { return cmp.Compare(far(a), far(b)) })
	var fresh, again []int
	for _, i := range sorted {
		if slices.ContainsFunc(fresh, func(k int) bool { return list[k].Knot == list[i].Knot }) {
			again = append(again, i)
		} else {
			fresh = append(fresh, i)
		}
	}
	all := append(fresh, again...)
	return all[:min(n, len(all))]
}

// Condition of a rig that is not a number: exactly one field is set.
type Condition struct {
	// Wet or dry; else a value of a field of the table; else another material.
	Wet      *bool
	Field    *rig.Field
	Value    *rig.Value
	Material *line.Material
}

// first is the knot that comes first for a document with one joint, "" if none does or
// if the document cannot be resolved.
func first(c *trade.Catalogue, d rig.Document) string {
	r, err := c.Resolve(d)
	if err != nil {
		return ""
	}
	return rank.First(c, r)
}

// Changes finds, for every number and condition of a rig with one joint, the nearest
// value at which its first choice changes. Numbers are searched on a logarithmic
// scale, eightfold up and down within their limits, in steps of a twelfth of that, and
// the edge is then bisected to half a per cent: a change that reverts within one step
// may be missed. The error names the field, or is the context's.
func Changes(ctx context.Context, c *trade.Catalogue, d rig.Document) ([]Change, error) {
	r, err := c.Resolve(d)
	if err != nil {
		return nil, err
	}
	d = r.Document
	now := rank.First(c, r)
	free := unlimited(c, d, now)
	var out []Change
	for _, in := range rig.Inputs(d) {
		v, _ := in.Get(d)
		if v <= 0 {
			continue // left out: enough, or the material's own
		}
		for _, up := range []bool{false, true} {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			from := free
			if in.Part == rig.JointPart {
				from = d // the limit itself is turned
			}
			if to, knot, ok := edge(c, from, in, v, up, now); ok && !(limits(in) && far(to, v)) {
				out = append(out, Change{Input: in, From: v, To: to, Up: up, Knot: knot})
			}
		}
	}
	for _, alt := range alternatives(c, free) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if knot := first(c, alt.doc); knot != now {
			out = append(out, Change{Condition: &alt.Condition, Knot: knot})
		}
	}
	return out, nil
}

// unlimited is the rig with no limit on line to tie with and on time, where without them
// the same knot comes first: else a thicker line, say, would be said to change the choice
// only because the end is then too short for it.
func unlimited(c *trade.Catalogue, d rig.Document, now string) rig.Document {
	free := d.Clone()
	free.Chain[1].Joint.TailM, free.Chain[1].Joint.Seconds = 0, 0
	if first(c, free) != now {
		return d
	}
	return free
}

// limits reports whether an input is a limit on line or time.
func limits(in *rig.Input) bool {
	return in.Part == rig.JointPart && (in.JSON == "tail_m" || in.JSON == "seconds")
}

// far: a limit that would have to change by more than half is not near.
func far(to, now float64) bool { return to > 1.5*now || to < now/1.5 }

// edge walks from v until another knot comes first, and closes in on the place.
func edge(c *trade.Catalogue, d rig.Document, in *rig.Input, v float64, up bool, now string) (to float64, knot string, ok bool) {
	const steps = 12
	ratio := math.Pow(8, 1.0/steps)
	if !up {
		ratio = 1 / ratio
	}
	inside, x := v, v
	for range steps {
		x *= ratio
		if x < in.Min || x > in.Max {
			return 0, "", false
		}
		if knot = first(c, in.With(d, x)); knot != now {
			break
		}
		inside = x
	}
	if knot == now {
		return 0, "", false
	}
	outside := x
	for math.Abs(outside/inside-1) > 0.005 {
		mid := math.Sqrt(inside * outside)
		if k := first(c, in.With(d, mid)); k == now {
			inside = mid
		} else {
			outside, knot = mid, k
		}
	}
	return outside, knot, true
}

type alternative struct {
	Condition
	doc rig.Document
}

// alternatives turns every condition that is not a number.
func alternatives(c *trade.Catalogue, d rig.Document) []alternative {
	var out []alternative
	with := func(what Condition, change func(*rig.Document)) {
		alt := d.Clone()
		change(&alt)
		out = append(out, alternative{what, alt})
	}
	wet := d.Dry
	with(Condition{Wet: &wet}, func(x *rig.Document) { x.Dry = !wet })
	values := func(f *rig.Field, now string, set func(*rig.Document, string)) {
		for i := range f.Values {
			if v := &f.Values[i]; v.ID != now {
				with(Condition{Field: f, Value: v}, func(x *rig.Document) { set(x, v.ID) })
			}
		}
	}
	values(rig.FieldOf(rig.WholeRig, "character"), string(d.Character), func(x *rig.Document, id string) { x.Character = rig.Character(id) })
	values(rig.FieldOf(rig.JointPart, "release"), string(d.Chain[1].Joint.Release), func(x *rig.Document, id string) { x.Chain[1].Joint.Release = rig.Release(id) })
	if c.Task(d.Chain[1].Joint.Task).Tackle {
		values(rig.FieldOf(rig.WholeRig, "water"), string(d.Water), func(x *rig.Document, id string) { x.Water = rig.Water(id) })
	} else {
		values(rig.FieldOf(rig.JointPart, "stay"), string(d.Chain[1].Joint.Stay), func(x *rig.Document, id string) { x.Chain[1].Joint.Stay = rig.Stay(id) })
	}
	if f := rig.FieldOf(rig.WholeRig, "consequence"); d.Consequence != rig.Person {
		person := &f.Values[len(f.Values)-1]
		with(Condition{Field: f, Value: person}, func(x *rig.Document) { x.Consequence = rig.Consequence(person.ID) })
	}
	l := d.Chain[2].Line
	fishing := c.Material(l.Material).Fishing
	for _, m := range c.Materials {
		if m.ID == l.Material || m.Fishing != fishing || m.Unknotted != "" {
			continue
		}
		with(Condition{Material: m}, func(x *rig.Document) {
			other := x.Chain[2].Line
			other.Material, other.Construction = m.ID, m.Constructions[0]
			if m.Makes(l.Construction) {
				other.Construction = l.Construction
			}
		})
	}
	return out
}
