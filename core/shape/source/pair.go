package source

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"sort"

	"oarweed/core/shape/curve"
)

// Pair is a doubled line: two strands side by side along one path, joined by a
// bight at its end. It is how a knot in the bight is threaded.
type Pair struct {
	// Gap between the centrelines of the two strands.
	Gap float64
	// Eye is the half width of the bight; at least half the gap.
	Eye float64
}

// ThreadPairs threads every pair as the two strands it stands for. A crossing of a
// pair becomes one crossing for each two strands that meet there. step is the
// number of the step shown, for the marks; 0 if the whole is meant.
func (s *Source) ThreadPairs(step int) *Source {
	type visit struct {
		rope, node int
		along      curve.Point
	}
	visits := map[string][]visit{}
	normals := make([][]curve.Point, len(s.Ropes))
	for r, rope := range s.Ropes {
		pts := make([]curve.Point, len(rope.Nodes))
		for i, n := range rope.Nodes {
			pts[i] = n.At
		}
		pieces := curve.Through(pts)
		normals[r] = make([]curve.Point, len(pts))
		for i := range pts {
			t := pieces[min(i, len(pieces)-1)].Tangent(0)
			if i == len(pieces) {
				t = pieces[i-1].Tangent(1)
			}
			normals[r][i] = curve.Pt(-t.Y, t.X)
			if name := rope.Nodes[i].Crossing; name != "" {
				visits[name] = append(visits[name], visit{r, i, t})
			}
		}
	}
	out := *s
	out.Crossings = map[string]curve.Point{}
	out.Ropes = nil
	sides := func(r int) []float64 {
		if p := s.Ropes[r].Pair; p != nil {
			return []float64{p.Gap / 2, -p.Gap / 2}
		}
		return []float64{0}
	}
	// strand threads rope r on one side, forward.
	strand := func(r, side int) (nodes []Node, at []int) {
		off := sides(r)[side]
		for i, n := range s.Ropes[r].Nodes {
			at = append(at, len(nodes))
			n.At = n.At.Add(normals[r][i].Times(off))
			v := visits[n.Crossing]
			if n.Crossing == "" || len(v) != 2 {
				nodes = append(nodes, n)
				continue
			}
			me, other, swapped := v[0], v[1], false
			if me.rope != r || me.node != i {
				me, other, swapped = other, me, true
			}
			var met []Node
			for k, o := range sides(other.rope) {
				a, b := side, k
				if swapped {
					a, b = k, side
				}
				name := n.Crossing
				if len(sides(me.rope))*len(sides(other.rope)) > 1 {
					name = fmt.Sprintf("%s.%d%d", n.Crossing, a, b)
				}
				at := meetOffset(s.Crossings[n.Crossing], me.along, off, other.along, o)
				out.Crossings[name] = at
				met = append(met, Node{at, n.Pass, name, ""})
			}
			sort.Slice(met, func(i, j int) bool { return met[i].At.Dot(me.along) < met[j].At.Dot(me.along) })
			nodes = append(nodes, met...)
		}
		return nodes, at
	}
	for r, rope := range s.Ropes {
		nodes, at := strand(r, 0)
		marks := map[int]int{}
		for k, n := range rope.Marks {
			marks[k] = at[n]
		}
		if rope.Pair != nil {
			back, backAt := strand(r, 1)
			end := len(rope.Nodes) - 1
			tip, n := rope.Nodes[end].At, normals[r][end]
			t := curve.Pt(n.Y, -n.X)
			if e := rope.Pair.Eye; e > rope.Pair.Gap/2 {
				for _, p := range []curve.Point{n.Times(e).Add(t.Times(2 * e)), t.Times(3.1 * e), n.Times(-e).Add(t.Times(2 * e))} {
					nodes = append(nodes, Node{At: tip.Add(p)})
				}
			} else {
				for _, a := range []float64{math.Pi / 4, 0, -math.Pi / 4} { // a half circle
					s, c := math.Sincos(a)
					nodes = append(nodes, Node{At: tip.Add(t.Times(c * rope.Pair.Gap / 2)).Add(n.Times(s * rope.Pair.Gap / 2))})
				}
			}
			last := len(nodes) + len(back) - 1
			slices.Reverse(back)
			nodes = append(nodes, back...)
			marks = map[int]int{}
			if _, moves := rope.Marks[step]; moves {
				from := rope.Mark(step - 1)
				marks[step-1], marks[step] = at[from], last-backAt[from]
			}
		}
		rope.Nodes, rope.Marks = nodes, marks
		out.Ropes = append(out.Ropes, rope)
	}
	return &out
}

// meetOffset is where two lines through p along a and b meet once each is moved
// sideways.
func meetOffset(p, a curve.Point, offA float64, b curve.Point, offB float64) curve.Point {
	na, nb := curve.Pt(-a.Y, a.X), curve.Pt(-b.Y, b.X)
	den := a.Cross(b)
	if math.Abs(den) < 1e-6 {
		return p.Add(na.Times(offA))
	}
	u := p.Add(na.Times(offA))
	v := p.Add(nb.Times(offB))
	return u.Add(a.Times(v.Sub(u).Cross(b) / den))
}

// UpTo is the source with every rope cut off at a share of its way from the mark
// of one step to that of the next; crossings met only once are not there yet.
func (s *Source) UpTo(step float64) *Source {
	out := *s
	out.Ropes = nil
	lo := int(math.Floor(step))
	met := map[string]int{}
	for _, rope := range s.Ropes {
		last := len(rope.Nodes) - 1
		end := last
		if len(rope.Marks) > 0 {
			from, to := rope.Mark(lo), rope.Mark(int(math.Ceil(step)))
			end = from + int(math.Round(float64(to-from)*(step-float64(lo))))
			for end > from && rope.Nodes[end].Pass != Plain {
				end--
			}
		}
		rope.Nodes = slices.Clone(rope.Nodes[:max(end, 1)+1])
		marks := map[int]int{}
		for k, n := range rope.Marks {
			if n < len(rope.Nodes) {
				marks[k] = n
			}
		}
		if _, moves := rope.Marks[int(math.Ceil(step))]; moves {
			marks[int(math.Ceil(step))] = len(rope.Nodes) - 1 // still on its way there
		}
		rope.Marks = marks
		if p := rope.Pair; p != nil && end < last {
			rope.Pair = &Pair{Gap: p.Gap} // on its way the bight is held closed
			if p.Gap < 1.8*rope.Width {
				rope.Pair.Eye = rope.Width // as closely as the line bends
			}
		}
		for _, n := range rope.Nodes {
			met[n.Crossing]++
		}
		out.Ropes = append(out.Ropes, rope)
	}
	for _, rope := range out.Ropes {
		for i := range rope.Nodes {
			if n := &rope.Nodes[i]; n.Crossing != "" && met[n.Crossing] < 2 {
				n.Pass, n.Crossing = Plain, ""
			}
		}
	}
	out.Crossings = maps.Clone(s.Crossings)
	for name := range out.Crossings {
		if met[name] < 2 {
			delete(out.Crossings, name)
		}
	}
	return &out
}

// Mark is the node that the last mark up to step n stands on.
func (r Rope) Mark(n int) int {
	best := -1
	for k := range r.Marks {
		if k <= n && k > best {
			best = k
		}
	}
	if best < 0 {
		return 0
	}
	return r.Marks[best]
}

// Steps is the number of the last step: that of the last frame, or the highest mark.
func (s *Source) Steps() int {
	if s.Step > 0 {
		return s.Step
	}
	n := 0
	for _, r := range s.Ropes {
		for k := range r.Marks {
			n = max(n, k)
		}
	}
	return n
}

// Paired reports whether a rope is threaded doubled.
func (s *Source) Paired() bool {
	return slices.ContainsFunc(s.Ropes, func(r Rope) bool { return r.Pair != nil })
}
