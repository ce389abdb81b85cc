package tangle

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/shape"
	"oarweed/core/shape/curve"
	"oarweed/core/shape/source"
)

// Of closes the open ends of a drawing by every rule that applies and computes the
// invariants of each:
//
//   - one rope, no object: "front" joins end to start in front of everything,
//     "behind" behind everything;
//   - one rope on an object: "L" closes the rope in front and the object far
//     away; on a bar also "K1" (top of the bar to the rope's start, its bottom to
//     the rope's end) and "K2" (the other way round), in front; each once more
//     "behind";
//   - two ropes, the closures of a tangle (J. H. Conway, An enumeration of knots and links,
//     1970): "N", the numerator, joins standing part to standing part and tail to tail, "X"
//     each standing part to the other's tail, "D" each rope to itself;
//   - parts by themselves, closed in front: "alone" a rope without its object,
//     "1" and "2" the ropes of a bend, "half" a doubled rope up to its bight,
//     "begun" the first rope up to the step that the source names, "part" up to a
//     place that it names; "alone", "1" and "2" once more "behind";
//   - where a rope is so divided, also its two parts as if they were two ropes,
//     each run in the rope's direction: "cut N", "cut X" and "cut D", the last
//     with the object; for a second place "part 2", "cut 2 N" and so on. A form
//     made in the bight is no knot at all when it is closed whole; cut at the
//     bight it is.
//
// The first closing arc passes in front of the knot, the second in front of the
// first.
func Of(sh *shape.Shape) []Closure {
	names, _ := divided(sh)
	return Closures(Drawn{sh}, len(sh.Ropes), OutlineOf(sh), names)
}

// DiagramsOf closes a drawing by every rule that applies, its parts too.
func DiagramsOf(sh *shape.Shape) []Diagram {
	names, _ := divided(sh)
	var out []Diagram
	for _, p := range append(plans(len(sh.Ropes), OutlineOf(sh)), partPlans(len(sh.Ropes), OutlineOf(sh), names)...) {
		out = append(out, closed(Drawn{sh}, p))
	}
	return out
}

// Drawn is a drawing as strands that can be closed.
type Drawn struct{ *shape.Shape }

// OutlineOf is how the object of a drawing is closed.
func OutlineOf(sh *shape.Shape) Outline {
	if len(sh.Objects) == 0 {
		return NoObject
	}
	switch o := sh.Objects[0]; {
	case o.Form() == source.Gap:
		return NoObject
	case o.Form() == source.Round || o.Kind == source.Cleat:
		return ClosedRing
	}
	return OpenBar
}

// Strand gives a rope as a polygon whose vertices avoid the crossing points, or
// the axis of a bar.
func (d Drawn) Strand(ref Ref) []Vertex {
	var out []Vertex
	if ref.Object {
		o := d.Objects[ref.Index]
		far := o.Len/2 + 0.35
		a, b := o.At.Add(curve.Pt(0.011, far)), o.At.Add(curve.Pt(-0.013, -far))
		if o.Form() == source.Level {
			a, b = o.At.Add(curve.Pt(far, 0.011)), o.At.Add(curve.Pt(-far, -0.013))
		}
		out = []Vertex{{At: a, Ref: ref}, {At: b, Ref: ref}}
	} else {
		c := d.Curves[ref.Index]
		from, upto := 0.0, c.Length()
		if ref.Share != Whole {
			_, at := divided(d.Shape)
			if ref.Share == First {
				upto = at[ref.Cut] - Sliver
			} else {
				from = at[ref.Cut] + Sliver
			}
		}
		out = append(out, Vertex{At: c.At(from), Ref: ref, S: from})
		for k := range c.Points[1:] {
			if s := (c.S[k] + c.S[k+1]) / 2; s > from && s < upto {
				out = append(out, Vertex{At: c.At(s), Ref: ref, S: s})
			}
		}
		out = append(out, Vertex{At: c.At(upto), Ref: ref, S: upto})
	}
	if ref.Reverse {
		slices.Reverse(out)
		// A segment takes its data from the vertex it begins at; run backward, from
		// the vertex it used to end at, which differs by less than one sample.
	}
	return out
}

// divided names the first parts of the first rope and says how far along it they
// end.
func divided(sh *shape.Shape) (names []string, at []float64) {
	c := sh.Curves[0]
	switch {
	case sh.Threaded:
		names, at = append(names, "half"), append(at, c.Length()/2)
	case sh.Begun > 0:
		names, at = append(names, "begun"), append(at, c.NodeS(sh.Ropes[0].Mark(sh.Begun)))
	}
	for i, share := range sh.Parts {
		name := "part"
		if i > 0 {
			name = fmt.Sprintf("part %d", i+1)
		}
		names, at = append(names, name), append(at, share*c.Length())
	}
	return names, at
}

// FarAway closes an object on itself without passing near the rope: a ring is
// closed already, a bar goes round outside the whole drawing.
func (d Drawn) FarAway(ref Ref) []Vertex {
	o := d.Objects[ref.Index]
	if o.Form() == source.Round {
		var out []Vertex
		const n = 97
		for k := range n {
			a := 2 * math.Pi * (float64(k) + 0.37) / n
			out = append(out, Vertex{At: o.At.Add(curve.Pt(o.R*math.Cos(a), o.R*o.Tall()*math.Sin(a))), Ref: ref})
		}
		return out
	}
	big := 0.0
	for _, c := range d.Curves {
		for _, p := range c.Points {
			big = math.Max(big, p.Sub(o.At).Len())
		}
	}
	big += 5
	axis := d.Strand(ref)
	dir := axis[1].At.Sub(axis[0].At).Unit()
	side := curve.Pt(-dir.Y, dir.X)
	a, b := axis[0].At.Sub(dir.Times(big)), axis[1].At.Add(dir.Times(big))
	return []Vertex{{At: a, Ref: ref}, {At: b, Ref: ref}, {At: b.Add(side.Times(3 * big)), Ref: ref}, {At: a.Add(side.Times(3 * big)), Ref: ref}}
}

// Over goes by what the source declares where the two meet.
func (d Drawn) Over(p, q Vertex, _, _ float64) (over bool, declared int) {
	switch {
	case p.Ref.Object && q.Ref.Object:
		return true, -1
	case p.Ref.Object:
		return !d.FrontAt(shape.Spot{Rope: q.Ref.Index, S: q.S}, p.Ref.Index), -1
	case q.Ref.Object:
		return d.FrontAt(shape.Spot{Rope: p.Ref.Index, S: p.S}, q.Ref.Index), -1
	}
	// The crossing found at load that lies nearest.
	best := math.Inf(1)
	for i, x := range d.Found {
		a, b := shape.Spot{Rope: p.Ref.Index, S: p.S}, shape.Spot{Rope: q.Ref.Index, S: q.S}
		near := func(u, v shape.Spot) float64 {
			if u.Rope != v.Rope {
				return math.Inf(1)
			}
			return math.Abs(u.S - v.S)
		}
		number := i
		if x.Hidden {
			number = -1
		}
		if m := near(a, x.Over) + near(b, x.Under); m < best {
			best, over, declared = m, true, number
		}
		if m := near(b, x.Over) + near(a, x.Under); m < best {
			best, over, declared = m, false, number
		}
	}
	return over, declared
}

// DrawnBack closes a drawing as it is, and with the working end of rope r drawn back out
// of its last tuck, over or under a rope or behind an object: the knot with that tuck left
// out. Both are closed by every rule, each in front and behind, for a last pass that lies
// over everything shows only under an arc behind. It gives nothing for an end that passes
// nothing.
func DrawnBack(sh *shape.Shape, r int) (whole, back []Closure) {
	last := -1.0
	for _, x := range sh.Found {
		for _, p := range []shape.Spot{x.Over, x.Under} {
			if p.Rope == r && !x.Hidden {
				last = math.Max(last, p.S)
			}
		}
	}
	for _, p := range sh.Passings {
		if p.Rope == r && !p.Front {
			last = math.Max(last, p.S)
		}
	}
	if last < 0 {
		return nil, nil
	}
	names, _ := divided(sh)
	front := append(plans(len(sh.Ropes), OutlineOf(sh)), partPlans(len(sh.Ropes), OutlineOf(sh), names)...)
	all := append(front, behind(front)...)
	// Just before it: nothing lies between, for crossings are more than this apart.
	return closeAll(Drawn{sh}, all), closeAll(shortened{Drawn{sh}, r, last - 0.4*sh.Ropes[r].Width}, all)
}

// shortened is a drawing of which one rope ends early.
type shortened struct {
	Drawn
	rope int
	upto float64
}

// Strand gives the rope as far as it goes.
func (d shortened) Strand(ref Ref) []Vertex {
	out := d.Drawn.Strand(ref)
	if ref.Object || ref.Index != d.rope {
		return out
	}
	return slices.DeleteFunc(out, func(v Vertex) bool { return v.S > d.upto })
}
