package snug

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape"
	"oarweed/core/shape/curve"
	"oarweed/core/shape/source"
	"oarweed/core/shape/space"
)

const (
	// loose is how much farther apart ropes lie at the start than they are drawn.
	loose = 1.25
	// lead is how much rope is left before the first and after the last crossing, in
	// diameters.
	lead = 3.0
	// crossed is how far apart axes are laid at a crossing, in mean diameters.
	crossed = 1.15
	// nodeEvery is the length of a segment, in diameters, when a knot is drawn up.
	nodeEvery = 0.18
	// drawnUp is the share of its length that a knot has when it is drawn up, for the
	// number of nodes.
	drawnUp  = 0.55
	mostNode = 320
)

// Lift lays a drawing out in space: what is drawn over lies higher. Ends are held, and of
// a loop the far side of its eye. Lengths are in diameters of the first rope.
func Lift(sh *shape.Shape, eye bool) []Strand {
	l := &lifter{sh: sh, by: loose / sh.Ropes[0].Width, w: sh.Ropes[0].Width}
	for _, o := range sh.Objects {
		if o.Form() != source.Gap { // through a gap ropes pass freely
			l.things = append(l.things, l.object(o))
		}
		l.objects = append(l.objects, o)
	}
	l.events()
	l.settle()
	var out []Strand
	for r := range sh.Curves {
		out = append(out, l.rope(r))
	}
	if len(out) == 1 && len(l.objects) == 1 && bars[l.objects[0].Kind] {
		l.together(&out[0])
	}
	if eye && len(l.things) == 0 {
		out = append(out, l.peg(out[0]))
	}
	return append(out, l.things...)
}

// Laid lays out a model in space, whose lengths are in diameters of the first rope. The
// ends of its ropes are held.
func Laid(m *space.Model) []Strand {
	ropes, object, ring := m.Seen()
	var out []Strand
	for k, r := range ropes {
		s := Strand{Nodes: rounded(r), D: m.Wide[k]}
		n := int(s.length() * 0.8 / nodeEvery / s.D)
		s = s.resampled(max(40, min(mostNode, n)))
		s.Held = []int{0, len(s.Nodes) - 1}
		out = append(out, s)
	}
	if len(object) > 0 {
		s := Strand{Nodes: object, D: max(m.Thick, 0.5), Fixed: true, Closed: ring}
		out = append(out, s.resampled(max(8, int(s.length()/0.4))))
	}
	for _, f := range m.Feet {
		s := Strand{Nodes: []r3.Vec{f.From, f.To}, D: f.Thick, Fixed: true, Aside: true}
		out = append(out, s.resampled(max(8, int(s.length()/0.4))))
	}
	return out
}

// rounded cuts the corners of a path.
func rounded(path []r3.Vec) []r3.Vec {
	for range 3 {
		out := []r3.Vec{path[0]}
		for i := 0; i+1 < len(path); i++ {
			out = append(out, lerp(path[i], path[i+1], 0.25), lerp(path[i], path[i+1], 0.75))
		}
		path = append(out, path[len(path)-1])
	}
	return path
}

func lerp(a, b r3.Vec, t float64) r3.Vec { return r3.Add(a, r3.Scale(t, r3.Sub(b, a))) }

type lifter struct {
	sh      *shape.Shape
	by, w   float64
	things  []Strand
	objects []source.Object
	// at[r] are places along rope r with a height, in order.
	at [][]height
	// over[k] is higher than under[k].
	over, under []ref
}

type height struct {
	s, z float64
	// low and high bound z: in front of an object, or behind it.
	low, high float64
}

type ref struct{ rope, i int }

// place is where a point of the drawing lies, in diameters.
func (l *lifter) place(p curve.Point) r3.Vec { return r3.Vec{X: p.X * l.by, Y: -p.Y * l.by} }

// object is a bar or ring in space.
func (l *lifter) object(o source.Object) Strand {
	c := l.place(o.At)
	hx, hy := o.Half()
	bar := func(a, b r3.Vec) Strand {
		st := Strand{D: 2 * o.R * l.by / loose, Fixed: true}
		n := max(8, int(r3.Norm(r3.Sub(b, a))/0.4))
		for i := range n + 1 {
			st.Nodes = append(st.Nodes, lerp(a, b, float64(i)/float64(n)))
		}
		return st
	}
	switch o.Form() {
	case source.Upright:
		return bar(r3.Add(c, r3.Vec{Y: hy * l.by}), r3.Add(c, r3.Vec{Y: -hy * l.by}))
	case source.Level:
		return bar(r3.Add(c, r3.Vec{X: -hx * l.by}), r3.Add(c, r3.Vec{X: hx * l.by}))
	}
	n := int(2 * math.Pi * o.R * l.by / 0.4)
	st := ring(n, func(t float64) r3.Vec {
		return r3.Add(c, r3.Scale(o.R*l.by, r3.Vec{X: math.Cos(t), Y: math.Sin(t)}))
	})
	st.D, st.Fixed = o.Len*l.by/loose, true
	return st
}

// thick is the diameter of rope r, in those of the first.
func (l *lifter) thick(r int) float64 { return l.sh.Ropes[r].Width / l.w }

// events are the places with a height: crossings, and what lies before or behind objects.
func (l *lifter) events() {
	l.at = make([][]height, len(l.sh.Curves))
	free := func(s float64) height { return height{s: s, low: math.Inf(-1), high: math.Inf(1)} }
	for r, c := range l.sh.Curves {
		for s := 0.0; s <= c.Length(); s += 0.25 * l.w {
			h := free(s)
			inside := false
			for k, o := range l.objects {
				if o.Form() == source.Gap || !o.Within(c.At(s), 0.5*l.sh.Ropes[r].Width) {
					continue
				}
				front, ok := l.front(r, s, k)
				if !ok {
					continue
				}
				inside = true
				far := (o.R*2*l.by/loose + l.thick(r)) / 2 * 1.08
				if o.Form() == source.Round {
					far = (o.Len*l.by/loose + l.thick(r)) / 2 * 1.08
				}
				if front {
					h.low = math.Max(h.low, far)
				} else {
					h.high = math.Min(h.high, -far)
				}
			}
			if inside {
				h.z = math.Max(h.low, math.Min(h.high, 0))
				l.at[r] = append(l.at[r], h)
			}
		}
	}
	type pass struct{ over, under shape.Spot }
	var passes []pass
	for _, x := range l.sh.Found {
		if !x.Hidden {
			passes = append(passes, pass{x.Over, x.Under})
		}
	}
	bounds := func(s shape.Spot) height {
		h := free(s.S)
		// At an object the crossing keeps to its side.
		for _, o := range l.at[s.Rope] {
			if math.Abs(o.s-s.S) < 0.3*l.w {
				h.low, h.high, h.z = o.low, o.high, o.z
			}
		}
		return h
	}
	for _, p := range passes {
		l.at[p.over.Rope] = append(l.at[p.over.Rope], bounds(p.over))
		l.at[p.under.Rope] = append(l.at[p.under.Rope], bounds(p.under))
	}
	// Near a crossing the crossing alone says how high a strand lies.
	for r := range l.at {
		l.at[r] = slices.DeleteFunc(l.at[r], func(h height) bool {
			return slices.ContainsFunc(passes, func(p pass) bool {
				for _, x := range []shape.Spot{p.over, p.under} {
					if x.Rope == r && x.S != h.s && math.Abs(x.S-h.s) < 1.1*l.w {
						return true
					}
				}
				return false
			}) && !slices.ContainsFunc(passes, func(p pass) bool {
				return p.over == (shape.Spot{Rope: r, S: h.s}) || p.under == (shape.Spot{Rope: r, S: h.s})
			})
		})
	}
	for r := range l.at {
		slices.SortStableFunc(l.at[r], func(a, b height) int {
			switch {
			case a.s < b.s:
				return -1
			case a.s > b.s:
				return 1
			}
			return 0
		})
	}
	find := func(s shape.Spot) ref {
		best := 0
		for i, h := range l.at[s.Rope] {
			if math.Abs(h.s-s.S) < math.Abs(l.at[s.Rope][best].s-s.S) {
				best = i
			}
		}
		return ref{s.Rope, best}
	}
	for _, p := range passes {
		l.over, l.under = append(l.over, find(p.over)), append(l.under, find(p.under))
	}
}

// front reports on which side rope r passes object k near s.
func (l *lifter) front(r int, s float64, k int) (front, ok bool) {
	least := math.Inf(1)
	for _, p := range l.sh.Passings {
		if p.Rope == r && p.Object == k && math.Abs(p.S-s) < least {
			least, front, ok = math.Abs(p.S-s), p.Front, true
		}
	}
	return front, ok && least < 6*l.w
}

// settle finds heights at which every strand that passes over another is high enough.
func (l *lifter) settle() {
	z := func(r ref) *height { return &l.at[r.rope][r.i] }
	for range 2000 {
		moved := false
		for k := range l.over {
			a, b := z(l.over[k]), z(l.under[k])
			want := crossed * (l.thick(l.over[k].rope) + l.thick(l.under[k].rope)) / 2
			if short := want - (a.z - b.z); short > 1e-3 {
				moved = true
				a.z, b.z = a.z+short/2, b.z-short/2
				a.z, b.z = math.Max(a.low, math.Min(a.high, a.z)), math.Max(b.low, math.Min(b.high, b.z))
				if short = want - (a.z - b.z); short > 1e-3 {
					// One of them lies on an object: the other gives way.
					if a.z >= a.high-1e-9 {
						b.z = math.Max(b.low, a.z-want)
					} else {
						a.z = math.Min(a.high, b.z+want)
					}
				}
			}
		}
		if !moved {
			return
		}
	}
}

// rope lays a rope through its heights, with leads, and holds its ends.
func (l *lifter) rope(r int) Strand {
	c := l.sh.Curves[r]
	from, to := 0.0, c.Length()
	if h := l.at[r]; len(h) > 0 {
		from = math.Max(0, h[0].s-lead*l.w)
		to = math.Min(to, h[len(h)-1].s+lead*l.w)
	}
	// Ends have a height of their own: that of the nearest place.
	at := func(s float64) float64 {
		h := l.at[r]
		if len(h) == 0 {
			return 0
		}
		if s <= h[0].s {
			return h[0].z * math.Max(0, 1-(h[0].s-s)/(2.5*l.w))
		}
		for i := 0; i+1 < len(h); i++ {
			if s <= h[i+1].s {
				if h[i+1].s == h[i].s {
					return h[i+1].z
				}
				f := (s - h[i].s) / (h[i+1].s - h[i].s)
				f = f * f * (3 - 2*f)
				return h[i].z + f*(h[i+1].z-h[i].z)
			}
		}
		last := h[len(h)-1]
		return last.z * math.Max(0, 1-(s-last.s)/(2.5*l.w))
	}
	out := Strand{D: l.thick(r)}
	const fine = 400
	for i := range fine + 1 {
		s := from + (to-from)*float64(i)/fine
		v := l.place(c.At(s))
		v.Z = at(s)
		out.Nodes = append(out.Nodes, v)
	}
	n := int(out.length() * drawnUp / nodeEvery / out.D)
	out = out.resampled(max(40, min(mostNode, n)))
	out.Held = []int{0, len(out.Nodes) - 1}
	return out
}

// bars are things on which turns are pushed together.
var bars = map[source.ObjectKind]bool{source.Post: true, source.Bollard: true, source.Pylon: true, source.Spar: true, source.Bundle: true, source.Rail: true}

// together leads the ends of a hitch, drawn wide to be seen, beside one another along the
// bar, as the hand pushes turns together. A hitch that is pulled along its bar is left.
func (l *lifter) together(s *Strand) {
	bar := l.things[0].Nodes
	u := r3.Unit(r3.Sub(bar[len(bar)-1], bar[0]))
	n := len(s.Nodes)
	for _, i := range []int{0, n - 1} {
		if math.Abs(r3.Dot(u, r3.Unit(r3.Sub(s.at(i+1), s.at(i-1))))) > 0.75 {
			return
		}
	}
	a, b := r3.Dot(u, s.Nodes[0]), r3.Dot(u, s.Nodes[n-1])
	mid, beside := (a+b)/2, math.Copysign(0.55*s.D, a-b)
	s.Led = []r3.Vec{r3.Add(s.Nodes[0], r3.Scale(mid+beside-a, u)), r3.Add(s.Nodes[n-1], r3.Scale(mid-beside-b, u))}
}

// peg is a pin through the eye of a loop, at its far side.
func (l *lifter) peg(s Strand) Strand {
	var c r3.Vec
	for _, x := range l.sh.Found {
		c = r3.Add(c, r3.Scale(1/float64(len(l.sh.Found)), l.place(x.At)))
	}
	far := s.Nodes[l.farSide(s)]
	in := r3.Sub(c, far)
	in.Z = 0
	at := r3.Add(far, r3.Scale((pegD+1)/2*1.05/r3.Norm(in), in))
	out := Strand{D: pegD, Fixed: true, Peg: true}
	for z := -6.0; z <= 6; z += 0.5 {
		out.Nodes = append(out.Nodes, r3.Vec{X: at.X, Y: at.Y, Z: z})
	}
	return out
}

// pegD is the diameter of the pin.
const pegD = 2.5

// farSide is the node of an eye that lies farthest from the knot: from the middle of the
// crossings, away from the ends.
func (l *lifter) farSide(s Strand) int {
	var c r3.Vec
	for _, x := range l.sh.Found {
		c = r3.Add(c, r3.Scale(1/float64(len(l.sh.Found)), l.place(x.At)))
	}
	best, far := len(s.Nodes)/2, 0.0
	for i, v := range s.Nodes {
		if i < len(s.Nodes)/5 || i > len(s.Nodes)*4/5 {
			continue
		}
		if d := r3.Norm(r3.Sub(v, c)); d > far {
			best, far = i, d
		}
	}
	return best
}
