package shape

import (
	"fmt"
	"math/bits"
	"slices"
	"strings"
)

// maxDrill is the largest number of crossings a drill may have: 2ⁿ choices are
// all worked out.
const maxDrill = 9

// Drill is the crossing drill of a shape: its shadow, with over and under to be
// set at every crossing. A choice is a bit mask over [Drill.Crossings]; bit i set
// means that crossing i is turned over against the drawing.
type Drill struct {
	sh *Shape
	// Crossings to set, in the order in which the ropes meet them first.
	Crossings []DrillCrossing
	index     []int    // position of each in sh.crossings
	keys      []string // invariants of every choice, by mask
}

// DrillCrossing is one crossing of the shadow.
type DrillCrossing struct {
	Name string `json:"name"`
	// X and Y in the units of the drawing.
	X float64 `json:"x"`
	Y float64 `json:"y"`
	// firstOver tells whether, in the drawing, the strand that comes by first is over.
	firstOver bool
}

// NewDrill works out the invariants of every choice of crossings.
func NewDrill(sh *Shape) (*Drill, error) {
	d := &Drill{sh: sh}
	for r, rope := range sh.Ropes {
		for i, n := range rope.Nodes {
			for k, x := range sh.crossings {
				s := sh.curves[r].nodeS(i)
				first := x.over
				if before(x.under, x.over) {
					first = x.under
				}
				if !x.hidden && n.Crossing == x.name && first == (spot{r, s}) {
					d.Crossings = append(d.Crossings, DrillCrossing{x.name, x.at.X, x.at.Y, first == x.over})
					d.index = append(d.index, k)
				}
			}
		}
	}
	n := len(d.Crossings)
	if n == 0 || n > maxDrill {
		return nil, fmt.Errorf("%s has %d crossings: a drill wants 1 to %d", sh.ID, n, maxDrill)
	}
	whole := sh.plans()
	meetings := make([][]meeting, len(whole))
	for i, p := range whole {
		meetings[i] = closed(sh, p).meetings()
	}
	d.keys = make([]string, 1<<n)
	flipped := make([]bool, len(sh.crossings))
	for mask := range d.keys {
		for i, k := range d.index {
			flipped[k] = mask>>i&1 == 1
		}
		var b strings.Builder
		for i, p := range whole {
			c := closureOf(meetings[i], len(p.components), flipped)
			fmt.Fprint(&b, c.Linking, c.Jones, ";")
		}
		d.keys[mask] = b.String()
	}
	return d, nil
}

func before(a, b spot) bool { return a.rope < b.rope || a.rope == b.rope && a.s < b.s }

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
func (d *Drill) Shadow(o Options, set map[string]bool) string {
	o.Step = float64(d.sh.Steps())
	draw := &drawing{Shape: d.sh, base: d.sh, o: o, plain: true, side: map[string]side{}}
	for _, c := range d.Crossings {
		over, ok := set[c.Name]
		switch {
		case !ok:
			draw.side[c.Name] = open
		case over != c.firstOver:
			draw.side[c.Name] = turned
		}
	}
	return draw.render()
}

// Frame is the box of the drawing in its own units: left, top, width, height.
func (d *Drill) Frame() [4]float64 {
	draw := &drawing{Shape: d.sh, base: d.sh}
	draw.box()
	return [4]float64{draw.min.X, draw.min.Y, draw.max.X - draw.min.X, draw.max.Y - draw.min.Y}
}

// Flipped is the shape with one crossing turned over.
func (sh *Shape) Flipped(name string) *Shape {
	src := *sh.Source
	src.Ropes = slices.Clone(sh.Ropes)
	for r := range src.Ropes {
		src.Ropes[r].Nodes = slices.Clone(src.Ropes[r].Nodes)
		for i := range src.Ropes[r].Nodes {
			if n := &src.Ropes[r].Nodes[i]; n.Crossing == name {
				n.Pass = map[Pass]Pass{Over: Below, Below: Over}[n.Pass]
			}
		}
	}
	out := *sh
	out.Source = &src
	out.crossings = slices.Clone(sh.crossings)
	for i := range out.crossings {
		if x := &out.crossings[i]; x.name == name && !x.hidden {
			x.over, x.under = x.under, x.over
		}
	}
	return &out
}
