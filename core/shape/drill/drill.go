// Package drill is the crossing drill: the bare shadow of a knot, on which a learner sets
// over and under at every crossing, and the tangle that each choice makes.
package drill

import (
	"fmt"
	"math/bits"
	"math/rand/v2"
	"strings"
	"sync"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/tangle"
)

const (
	// Most is the largest number of crossings a drill may have.
	Most = 30
	// all is the largest number with which all 2ⁿ choices are worked out; with more, so many
	// are tried.
	all     = 9
	sampled = 120
)

// Drill is the crossing drill of a shape: its shadow, with over and under to be
// set at every crossing. A choice is a bit mask over [Drill.Crossings]; bit i set
// means that crossing i is turned over against the drawing.
type Drill struct {
	sh *shape.Shape
	// Crossings to set, in the order in which the ropes meet them first.
	Crossings []Crossing
	index     []int // position of each in sh.Found

	whole     []tangle.Diagram
	crossings [][]tangle.Crossing
	mu        sync.Mutex
	keys      map[int]string // invariants of choices, by mask, as they are asked for
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

// New finds the crossings that can be set.
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
	if n := len(d.Crossings); n == 0 || n > Most {
		return nil, fmt.Errorf("%s has %d crossings: a drill wants 1 to %d", sh.ID, n, Most)
	}
	if n := len(d.Crossings); n > all {
		d.whole = tangle.DiagramsOf(sh) // what is made in the bight shows only in parts
	} else {
		d.whole = tangle.Diagrams(tangle.Drawn{Shape: sh}, len(sh.Ropes), tangle.OutlineOf(sh))
	}
	for _, x := range d.whole {
		d.crossings = append(d.crossings, x.Crossings())
	}
	d.keys = map[int]string{}
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
func (d *Drill) Key(mask int) string {
	d.mu.Lock()
	defer d.mu.Unlock()
	if key, ok := d.keys[mask]; ok {
		return key
	}
	flipped := make([]bool, len(d.sh.Found))
	for i, k := range d.index {
		flipped[k] = mask>>i&1 == 1
	}
	var b strings.Builder
	for i, x := range d.whole {
		linking, jones := tangle.JonesOf(d.crossings[i], x.Components(), flipped)
		fmt.Fprint(&b, linking, jones, ";")
	}
	d.keys[mask] = b.String()
	return d.keys[mask]
}

// Mirror is the choice with every crossing turned over. Without an object that is
// the mirror image; at an object it is not, since the rope's way round it stays.
func (d *Drill) Mirror(mask int) int { return mask ^ (d.Choices() - 1) }

// Choices is the number of ways to set all crossings.
func (d *Drill) Choices() int { return 1 << len(d.Crossings) }

// Free reports whether the knot is made without an object.
func (d *Drill) Free() bool { return len(d.sh.Objects) == 0 }

// Classes counts the choices that share each key; whole is false where there are too many to
// work all out, and only some were tried, the same ones each time.
func (d *Drill) Classes() (classes map[string]int, whole bool) {
	classes = map[string]int{}
	if len(d.Crossings) <= all {
		for mask := range d.Choices() {
			classes[d.Key(mask)]++
		}
		return classes, true
	}
	rnd := rand.New(rand.NewPCG(uint64(len(d.Crossings)), 9))
	for range sampled {
		classes[d.Key(rnd.IntN(d.Choices()))]++
	}
	return classes, false
}

// Told reports whether the choices can be told apart: turning over any one crossing of the
// drawing changes its key.
func (d *Drill) Told() bool {
	for i := range d.Crossings {
		if d.Key(1<<i) == d.Key(0) {
			return false
		}
	}
	return true
}

// Wrong names the crossings in which a choice differs from the drawing, or from its mirror
// image where the knot is made without an object and that is nearer.
func (d *Drill) Wrong(mask int) []string {
	if d.Free() && Nearest(mask, d.Mirror(0)) < Nearest(mask, 0) {
		mask = d.Mirror(mask)
	}
	out := []string{}
	for i, c := range d.Crossings {
		if mask>>i&1 == 1 {
			out = append(out, c.Name)
		}
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
