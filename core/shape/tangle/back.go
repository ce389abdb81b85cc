package tangle

import (
	"fmt"
	"math"
	"slices"

	"oarweed/core/shape/curve"
)

// Stages follows what a knot turns into while one rope is drawn back out of it, crossing by
// crossing, from its end, or from its standing part: its closures as text, of the whole knot
// first. A closed curve forgets which of its ends was which; the two ways of drawing back do
// not, so that "pull the end" is told from "pull the standing part".
func Stages(k Strands, ropes int, object Outline, rope int, standing bool) []string {
	ref := Ref{Index: rope}
	line := k.Strand(ref)
	places := meetsAlong(k, ropes, object, rope, line)
	if standing {
		slices.Reverse(places)
	}
	var out []string
	add := func(k Strands) {
		stage := ""
		for _, d := range Both(k, ropes, object) {
			linking, jones := d.Jones()
			stage += fmt.Sprintln(d.Name, linking, jones)
		}
		out = append(out, stage)
	}
	add(k)
	for i := len(places) - 1; i >= 0; i-- {
		// Half way to the next crossing on the way back, or to the very end of the rope.
		far := 0.0
		if standing {
			far = float64(len(line) - 1)
		}
		if i > 0 {
			far = places[i-1]
		}
		at := (places[i] + far) / 2
		if i == 0 {
			at = places[i] + 0.02*(far-places[i])
		}
		add(cutBack{k, rope, at, standing})
	}
	return out
}

// meetsAlong lists where along a rope, in vertices and fractions, it meets itself, another or
// the object, rising.
func meetsAlong(k Strands, ropes int, object Outline, rope int, line []Vertex) []float64 {
	var out []float64
	meet := func(other []Vertex, same, closed bool) {
		n := len(other) - 1
		if closed {
			n = len(other)
		}
		for i := range len(line) - 1 {
			for j := range n {
				if same && (j >= i-1 && j <= i+1) {
					continue
				}
				t, _, ok := curve.Meet(line[i].At, line[i+1].At, other[j].At, other[(j+1)%len(other)].At)
				if ok {
					out = append(out, float64(i)+t)
				}
			}
		}
	}
	for r := range ropes {
		meet(k.Strand(Ref{Index: r}), r == rope, false)
	}
	switch object {
	case ClosedRing:
		meet(k.FarAway(Ref{Object: true}), false, true)
	case OpenBar:
		meet(k.Strand(Ref{Object: true}), false, false)
	}
	slices.Sort(out)
	return out
}

// cutBack is a knot of which one rope is drawn back to a place on it.
type cutBack struct {
	Strands
	rope     int
	at       float64
	standing bool
}

// Strand gives the rope as far as it still goes.
func (c cutBack) Strand(ref Ref) []Vertex {
	if ref.Object || ref.Index != c.rope || ref.Share != Whole {
		return c.Strands.Strand(ref)
	}
	reverse := ref.Reverse
	ref.Reverse = false
	line := c.Strands.Strand(ref)
	i := int(math.Min(c.at, float64(len(line)-2)))
	t := c.at - float64(i)
	cut := line[i]
	cut.At = curve.Lerp(line[i].At, line[i+1].At, t)
	cut.Z += t * cut.Rise
	cut.S += t * (line[i+1].S - line[i].S)
	var out []Vertex
	if c.standing {
		cut.Rise *= 1 - t
		out = append([]Vertex{cut}, line[i+1:]...)
	} else {
		line[i].Rise *= t
		out = append(slices.Clone(line[:i+1]), cut)
	}
	if reverse {
		// A segment takes its data from the vertex it begins at: run backward its height falls
		// to that of the vertex before.
		slices.Reverse(out)
		for v := range len(out) - 1 {
			out[v].Rise = out[v+1].Z - out[v].Z
		}
		for v := range out {
			out[v].Ref.Reverse = true
		}
	}
	return out
}
