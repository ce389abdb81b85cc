package shape

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"sort"

	"oarweed/core/problem"
)

// Pair is a doubled line: two strands side by side along one path, joined by a
// bight at its end. It is how a knot in the bight is threaded.
type Pair struct {
	// Gap between the centrelines of the two strands.
	Gap float64
	// Eye is the half width of the bight; at least half the gap.
	Eye float64
}

// doubled threads every pair as the two strands it stands for. A crossing of a
// pair becomes one crossing for each two strands that meet there. step is the
// number of the step shown, for the marks; 0 if the whole is meant.
func (s *Source) doubled(step int) *Source {
	type visit struct {
		rope, node int
		along      Point
	}
	visits := map[string][]visit{}
	normals := make([][]Point, len(s.Ropes))
	for r, rope := range s.Ropes {
		pts := make([]Point, len(rope.Nodes))
		for i, n := range rope.Nodes {
			pts[i] = n.At
		}
		pieces := hobby(pts)
		normals[r] = make([]Point, len(pts))
		for i := range pts {
			t := pieces[min(i, len(pieces)-1)].tangent(0)
			if i == len(pieces) {
				t = pieces[i-1].tangent(1)
			}
			normals[r][i] = Point{-t.Y, t.X}
			if name := rope.Nodes[i].Crossing; name != "" {
				visits[name] = append(visits[name], visit{r, i, t})
			}
		}
	}
	out := *s
	out.Crossings = map[string]Point{}
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
			n.At = n.At.add(normals[r][i].times(off))
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
			sort.Slice(met, func(i, j int) bool { return met[i].At.dot(me.along) < met[j].At.dot(me.along) })
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
			t := Point{n.Y, -n.X}
			if e := rope.Pair.Eye; e > rope.Pair.Gap/2 {
				for _, p := range []Point{n.times(e).add(t.times(2 * e)), t.times(3.1 * e), n.times(-e).add(t.times(2 * e))} {
					nodes = append(nodes, Node{At: tip.add(p)})
				}
			} else {
				for _, a := range []float64{math.Pi / 4, 0, -math.Pi / 4} { // a half circle
					s, c := math.Sincos(a)
					nodes = append(nodes, Node{At: tip.add(t.times(c * rope.Pair.Gap / 2)).add(n.times(s * rope.Pair.Gap / 2))})
				}
			}
			last := len(nodes) + len(back) - 1
			slices.Reverse(back)
			nodes = append(nodes, back...)
			marks = map[int]int{}
			if _, moves := rope.Marks[step]; moves {
				from := rope.mark(step - 1)
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
func meetOffset(p, a Point, offA float64, b Point, offB float64) Point {
	na, nb := Point{-a.Y, a.X}, Point{-b.Y, b.X}
	den := a.cross(b)
	if math.Abs(den) < 1e-6 {
		return p.add(na.times(offA))
	}
	u := p.add(na.times(offA))
	v := p.add(nb.times(offB))
	return u.add(a.times(v.sub(u).cross(b) / den))
}

// upTo is the source with every rope cut off at a share of its way from the mark
// of one step to that of the next; crossings met only once are not there yet.
func (s *Source) upTo(step float64) *Source {
	out := *s
	out.Ropes = nil
	lo := int(math.Floor(step))
	met := map[string]int{}
	for _, rope := range s.Ropes {
		last := len(rope.Nodes) - 1
		end := last
		if len(rope.Marks) > 0 {
			from, to := rope.mark(lo), rope.mark(int(math.Ceil(step)))
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

// mark is the node that the last mark up to step n stands on.
func (r Rope) mark(n int) int {
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

// steps is the number of the last step: that of the last frame, or the highest mark.
func (s *Source) steps() int {
	if s.step > 0 {
		return s.step
	}
	n := 0
	for _, r := range s.Ropes {
		for k := range r.Marks {
			n = max(n, k)
		}
	}
	return n
}

func (s *Source) paired() bool {
	return slices.ContainsFunc(s.Ropes, func(r Rope) bool { return r.Pair != nil })
}

// shapeOf lays out one picture of a source: pairs doubled, no frames.
func shapeOf(s *Source, step int) (*Shape, error) {
	if s.paired() {
		s = s.doubled(step)
	}
	sh := &Shape{Source: s}
	return sh, sh.layOut()
}

// Load parses and lays out a source, and refuses one whose drawn crossings are
// not the declared ones or whose drawing would be hard to read. A source with
// frames, or with a pair, has one picture for each step.
func Load(text string) (*Shape, error) {
	src, err := Parse(text)
	if err != nil {
		return nil, err
	}
	last := src.steps()
	sh, err := shapeOf(src, last)
	if err != nil {
		return nil, err
	}
	var l problem.List
	l.Take("", sh.Legible())
	picture := func(n int, s *Source) {
		f, err := shapeOf(s, n)
		if err == nil {
			err = f.Legible()
		}
		l.Take(fmt.Sprintf("step %d", n), err)
		f.step, f.framed = n, true
		sh.pictures[n] = f
	}
	if src.Frames != nil || src.paired() {
		sh.framed, sh.step = true, last
		sh.pictures = map[int]*Shape{}
		for n := 0; n < last; n++ {
			if f, ok := src.Frames[n]; ok {
				picture(n, f)
			} else if src.Frames == nil {
				picture(n, src.upTo(float64(n)))
			}
		}
		if src.Frames == nil {
			sh.whole = src
		}
	}
	return sh, l.Err()
}

// picture is what is seen at a step: the shape itself where the working end runs
// along one path, else the frame of that step.
func (sh *Shape) picture(step float64) *Shape {
	n := int(math.Ceil(step - 1e-9))
	if !sh.framed || n >= sh.step {
		if sh.whole == nil || step >= float64(sh.step) {
			return sh
		}
	}
	if f := sh.pictures[n]; f != nil && (sh.whole == nil || step == float64(n)) {
		return f
	}
	if sh.whole == nil {
		return sh.pictures[1]
	}
	// The bight on its way: cheap enough to lay out when asked for.
	f, err := shapeOf(sh.whole.upTo(step), n)
	if err != nil {
		return sh.pictures[int(math.Floor(step))]
	}
	f.step, f.framed = n, true
	return f
}
