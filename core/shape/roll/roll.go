// Package roll counts, of four joins that look alike, which way their ropes turn at their
// crossings: what one can see of why the granny rolls out and the reef does not.
//
// Both ropes are followed from tail to standing part. At each crossing the sign of
// z·(t_over × t_under) says which way the ropes turn about one another when they are pulled.
// Alike everywhere, both turn the same way and roll out; half and half, the turns lock. Of the
// fields between ropes, those whose edges all run one way round tell joins whose tails lie on
// one side from those whose tails do not.
//
// Evidence: our own derivation after a published idea (Patil, Sandt, Kolle and Dunkel,
// Science 367, 2020; from memory). It is no measurement of hold, ranks nothing, and is worked
// out for reef, granny, thief and grief only: of other knots it says nothing that is known to
// be true.
package roll

import (
	"errors"
	"math"
	"slices"

	"oarweed/core/shape"
	"oarweed/core/shape/curve"
)

// Joins are the ids of the drawings that it is worked out for.
var Joins = []string{"reef-knot", "granny", "thief", "grief"}

// Evidence of what is counted.
const Evidence = "own derivation after a published idea (Patil, Sandt, Kolle, Dunkel, Science 367, 2020, from memory); not a measurement of hold"

// Turn is a crossing and which way its ropes turn about one another, +1 or −1.
type Turn struct {
	At   curve.Point `json:"at"`
	Sign int         `json:"sign"`
}

// Rolled is what is counted.
type Rolled struct {
	Turns []Turn `json:"turns" nullable:"false"`
	// Sum of the signs, its own sign left out: as many as there are crossings, it rolls; 0,
	// it locks.
	Sum int `json:"sum"`
	// Fields whose edges all run one way round.
	Fields int `json:"fields"`
}

// ErrKink: a rope crosses itself with nothing in the loop, so that the crossing can be taken
// out by turning it, and a count of crossings says nothing.
var ErrKink = errors.New("a rope of the drawing crosses itself in a loop that nothing passes through")

// Of counts a drawing of two ropes.
func Of(sh *shape.Shape) (Rolled, error) {
	var out Rolled
	sum := 0
	visits := make([][]visit, len(sh.Curves))
	for i, x := range sh.Found {
		// Followed the other way, from standing part to tail, both tangents turn, and the sign
		// is the same.
		a, b := sh.Tangent(x.Over), sh.Tangent(x.Under)
		sign := 1
		if cross := a.X*-b.Y - -a.Y*b.X; cross < 0 { // drawings have y downward
			sign = -1
		}
		sum += sign
		out.Turns = append(out.Turns, Turn{x.At, sign})
		for _, s := range []shape.Spot{x.Over, x.Under} {
			visits[s.Rope] = append(visits[s.Rope], visit{i, s.S, sh.Tangent(s)})
		}
	}
	for r := range visits {
		slices.SortFunc(visits[r], func(a, b visit) int {
			if a.s < b.s {
				return -1
			}
			return 1
		})
		for k := range len(visits[r]) - 1 {
			if visits[r][k].crossing == visits[r][k+1].crossing {
				return Rolled{}, ErrKink
			}
		}
	}
	out.Sum = max(sum, -sum)
	out.Fields = fields(visits, len(sh.Found))
	return out, nil
}

// visit of a rope at a crossing, and the way it runs there.
type visit struct {
	crossing int
	s        float64
	way      curve.Point
}

// dart is an end of an edge at a crossing: where it leads, the angle at which it leaves, and
// whether the rope runs out along it.
type dart struct {
	to     int // the dart at its other end; −1: to an end of the rope
	angle  float64
	onward bool
}

// fields counts the fields whose edges all run one way round: from dart to dart, each time the
// next one to the left.
func fields(visits [][]visit, crossings int) int {
	at := make([][]int, crossings)
	var darts []dart
	add := func(crossing int, way curve.Point, onward bool) int {
		darts = append(darts, dart{-1, math.Atan2(-way.Y, way.X), onward})
		at[crossing] = append(at[crossing], len(darts)-1)
		return len(darts) - 1
	}
	for _, rope := range visits {
		last := -1
		for _, v := range rope {
			in := add(v.crossing, v.way.Times(-1), false)
			if last >= 0 {
				darts[in].to, darts[last].to = last, in
			}
			last = add(v.crossing, v.way, true)
		}
	}
	where := make([]int, len(darts))
	for c, list := range at {
		slices.SortFunc(list, func(a, b int) int {
			if darts[a].angle < darts[b].angle {
				return -1
			}
			return 1
		})
		for _, d := range list {
			where[d] = c
		}
	}
	n := 0
	seen := make([]bool, len(darts))
	for first := range darts {
		if seen[first] {
			continue
		}
		alike, open := true, false
		for d := first; ; {
			seen[d] = true
			if darts[d].to < 0 {
				open = true
				break
			}
			alike = alike && darts[d].onward == darts[first].onward
			// Arrived, the field goes on by the dart next clockwise.
			arrived := darts[d].to
			list := at[where[arrived]]
			k := slices.Index(list, arrived)
			d = list[(k+len(list)-1)%len(list)]
			if d == first {
				break
			}
			if seen[d] {
				open = true
				break
			}
		}
		if alike && !open {
			n++
		}
	}
	return n
}
