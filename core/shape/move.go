package shape

import (
	"fmt"
	"slices"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/shape/source"
)

// Continuous checks that from each step to the next only what is said to move does. Where the
// working end runs along one path that is so by how it is drawn; where each step has a picture
// of its own, the crossings and passes of what lies still must be those of the picture before,
// in the same order along the ropes, the same way over and on the same side: then at most as
// many stretches of the picture before have moved as are marked to have.
func (sh *Shape) Continuous() error {
	if !sh.Framed || sh.whole != nil {
		return nil
	}
	var l problem.List
	for n := 2; n <= sh.Step; n++ {
		before, after := sh.Picture(float64(n-1)), sh.Picture(float64(n))
		moved := make([][][2]float64, len(after.Ropes))
		stretches := 0
		for r := range after.Ropes {
			moved[r] = after.Moved(r, n, float64(n))
			stretches += len(moved[r])
		}
		still := after.passed(before, func(p Spot) bool {
			return !slices.ContainsFunc(moved[p.Rope], func(m [2]float64) bool { return p.S >= m[0]-1e-9 && p.S <= m[1]+1e-9 })
		}).text()
		if !before.passed(before, func(Spot) bool { return true }).yields(still, min(max(stretches, 1), 2)) {
			l.Add(fmt.Sprintf("step %d", n), "what has not moved does not lie as it did in the step before", "draw it as it lay, or mark what moved")
		}
	}
	return l.Err()
}

// pass of a rope at a crossing or an object.
type pass struct {
	s        float64
	crossing int // −1: an object
	over     bool
	object   int
	side     bool // a crossing: the other strand comes from the right
}

// passes of each rope, in order.
type passes [][]pass

// passed lists what the ropes pass where both strands are kept, of objects those that another
// picture has too: a spike may be put in.
func (sh *Shape) passed(other *Shape, kept func(Spot) bool) passes {
	out := make(passes, len(sh.Ropes))
	for i, x := range sh.Found {
		if x.Hidden || !kept(x.Over) || !kept(x.Under) {
			continue
		}
		right := sh.Tangent(x.Over).Cross(sh.Tangent(x.Under)) > 0
		out[x.Over.Rope] = append(out[x.Over.Rope], pass{s: x.Over.S, crossing: i, over: true, side: right})
		out[x.Under.Rope] = append(out[x.Under.Rope], pass{s: x.Under.S, crossing: i, side: !right})
	}
	for _, p := range sh.Passings {
		name := sh.Objects[p.Object].Name
		if kept(p.Spot) && slices.ContainsFunc(other.Objects, func(o source.Object) bool { return o.Name == name }) {
			out[p.Rope] = append(out[p.Rope], pass{s: p.S, crossing: -1, over: p.Front, object: p.Object})
		}
	}
	for _, rope := range out {
		slices.SortFunc(rope, func(a, b pass) int {
			if a.s < b.s {
				return -1
			}
			return 1
		})
	}
	return out
}

// text writes the passes so that pictures of the same tangle have the same text.
func (p passes) text() string {
	var b strings.Builder
	number := map[int]int{}
	for _, rope := range p {
		b.WriteByte('|')
		for _, x := range rope {
			sign := '-'
			if x.over {
				sign = '+'
			}
			if x.crossing < 0 {
				fmt.Fprintf(&b, "%cP%d ", sign, x.object)
				continue
			}
			if _, ok := number[x.crossing]; !ok {
				number[x.crossing] = len(number)
			}
			side := 'l'
			if x.side {
				side = 'r'
			}
			fmt.Fprintf(&b, "%c%d%c ", sign, number[x.crossing], side)
		}
	}
	return b.String()
}

// yields reports whether taking at most so many stretches out of the ropes leaves the text.
func (p passes) yields(text string, stretches int) bool {
	if p.text() == text {
		return true
	}
	if stretches == 0 {
		return false
	}
	for r, rope := range p {
		for from := range rope {
			for to := from + 1; to <= len(rope); to++ {
				if p.without(r, from, to).yields(text, stretches-1) {
					return true
				}
			}
		}
	}
	return false
}

// without takes a stretch out, and the other visit of each crossing that it goes through.
func (p passes) without(rope, from, to int) passes {
	gone := map[int]bool{}
	for _, x := range p[rope][from:to] {
		if x.crossing >= 0 {
			gone[x.crossing] = true
		}
	}
	out := make(passes, len(p))
	for r := range p {
		for i, x := range p[r] {
			if r == rope && i >= from && i < to || x.crossing >= 0 && gone[x.crossing] {
				continue
			}
			out[r] = append(out[r], x)
		}
	}
	return out
}
