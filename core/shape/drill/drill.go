// Package drill is the crossing drill: the bare shadow of a knot, on which a learner sets
// over and under at every crossing, and the tangle that each choice makes.
package drill

import (
	"fmt"
	"math/bits"
	"strings"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/tangle"
)

// maxDrill is the largest number of crossings a drill may have: 2ⁿ choices are
// all worked out.
const maxDrill = 9

// Drill is the crossing drill of a shape: its shadow, with over and under to be
// set at every crossing. A choice is a bit mask over [Drill.Crossings]; bit i set
// means that crossing i is turned over against the drawing.
type Drill struct {
	sh *shape.Shape
	// Crossings to set, in the order in which the ropes meet them first.
	Crossings []Crossing
	index     []int    // position of each in sh.Found
	keys      []string // invariants of every choice, by mask
}

// Crossing is one crossing of the shadow.
type Crossing struct {
	Name string `json:"name"`
	// X and Y in the units of the drawing.
	X float64 `json:"x"`
	Y float64 `json:"y"`
	// First and Second are the two strands, the one that comes by first before the other.
	First  Strand `json:"first"`
	Second Strand `json:"second"`
	// firstOver tells whether, in the drawing, the strand that comes by first is over.
	firstOver bool
}

// Strand is a rope, from 0, at the n-th crossing along it, from 1 at its standing part.
type Strand struct {
	Rope int `json:"rope"`
	Pass int `json:"pass"`
}

// passOf counts the crossings along the rope up to the spot, itself included.
func passOf(sh *shape.Shape, at shape.Spot) int {
	n := 0
	for _, x := range sh.Found {
		for _, s := range []shape.Spot{x.Over, x.Under} {
			if !x.Hidden && s.Rope == at.Rope && s.S <= at.S {
				n++
			}
		}
	}
	return n
}

// New works out the invariants of every choice of crossings.
func New(sh *shape.Shape) (*Drill, error) {
	d := &Drill{sh: sh}
	for r, rope := range sh.Ropes {
		for i, n := range rope.Nodes {
			for k, x := range sh.Found {
				s := sh.Curves[r].NodeS(i)
				first, second := x.Over, x.Under
				if before(x.Under, x.Over) {
					first, second = second, first
				}
				if !x.Hidden && n.Crossing == x.Name && first == (shape.Spot{Rope: r, S: s}) {
					d.Crossings = append(d.Crossings, Crossing{Name: x.Name, X: x.At.X, Y: x.At.Y, firstOver: first == x.Over,
						First: Strand{first.Rope, passOf(sh, first)}, Second: Strand{second.Rope, passOf(sh, second)}})
					d.index = append(d.index, k)
				}
			}
		}
	}
	n := len(d.Crossings)
	if n == 0 || n > maxDrill {
		return nil, fmt.Errorf("%s has %d crossings: a drill wants 1 to %d", sh.ID, n, maxDrill)
	}
	whole := tangle.Diagrams(tangle.Drawn{Shape: sh}, len(sh.Ropes), tangle.OutlineOf(sh))
	crossings := make([][]tangle.Crossing, len(whole))
	for i, x := range whole {
		crossings[i] = x.Crossings()
	}
	d.keys = make([]string, 1<<n)
	flipped := make([]bool, len(sh.Found))
	for mask := range d.keys {
		for i, k := range d.index {
			flipped[k] = mask>>i&1 == 1
		}
		var b strings.Builder
		for i, x := range whole {
			c := tangle.ClosureOf(crossings[i], x.Components(), flipped)
			fmt.Fprint(&b, c.Linking, c.Jones, ";")
		}
		d.keys[mask] = b.String()
	}
	return d, nil
}

func before(a, b shape.Spot) bool { return a.Rope < b.Rope || a.Rope == b.Rope && a.S < b.S }

// Mask turns what was set, by crossing name, true where the strand that comes by
// first was put over, into a choice. All crossings must be set.
func (d *Drill) Mask(firstOver map[string]bool) (int, error) {
	mask := 0
	for i, c := range d.Crossings {
		over, ok := firstOver[c.Name]
		if !ok {
			return 0, fmt.Errorf("crossing %s is not set", c.Name)
		}
		if over != c.firstOver {
			mask |= 1 << i
		}
	}
	return mask, nil
}

// Flips gives the choice that turns over the crossings named.
func (d *Drill) Flips(names []string) (int, error) {
	mask := 0
next:
	for _, name := range names {
		for i, c := range d.Crossings {
			if c.Name == name {
				mask |= 1 << i
				continue next
			}
		}
		return 0, fmt.Errorf("there is no crossing %s", name)
	}
	return mask, nil
}

// Key holds the invariants of a choice: choices with different keys are
// different tangles.
func (d *Drill) Key(mask int) string { return d.keys[mask] }

// Mirror is the choice with every crossing turned over. Without an object that is
// the mirror image; at an object it is not, since the rope's way round it stays.
func (d *Drill) Mirror(mask int) int { return mask ^ (len(d.keys) - 1) }

// Free reports whether the knot is made without an object.
func (d *Drill) Free() bool { return len(d.sh.Objects) == 0 }

// Classes counts the choices that share each key.
func (d *Drill) Classes() map[string]int {
	out := map[string]int{}
	for _, k := range d.keys {
		out[k]++
	}
	return out
}

// Nearest gives the number of crossings in which a choice differs from another.
func Nearest(a, b int) int { return bits.OnesCount(uint(a ^ b)) }

// Shadow draws the drill: crossings that are set show which strand is over, the
// others are left open. set holds, by name, whether the strand that comes by
// first is over.
func (d *Drill) Shadow(o draw.Options, set map[string]bool) string {
	side := map[string]draw.Side{}
	for _, c := range d.Crossings {
		over, ok := set[c.Name]
		switch {
		case !ok:
			side[c.Name] = draw.Open
		case over != c.firstOver:
			side[c.Name] = draw.Turned
		}
	}
	return draw.Shadow(d.sh, o, side)
}

// Frame is the box of the drawing in its own units: left, top, width, height.
func (d *Drill) Frame() [4]float64 { return draw.Frame(d.sh) }
