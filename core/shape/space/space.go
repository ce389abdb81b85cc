// Package space holds second drawings of knots: models in space, made from how a knot is
// tied, against which its drawing is proven.
package space

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/problem"
	"oarweed/core/shape"
	"oarweed/core/shape/curve"
	"oarweed/core/shape/source"
	"oarweed/core/shape/tangle"
)

// seen is where a place is seen in the drawing: X to the right, Y up, Z toward the viewer.
func seen(a r3.Vec) curve.Point { return curve.Pt(a.X, -a.Y) }

func turned(a r3.Vec, v Lean) r3.Vec { return v.turn(generic.turn(a)) }

func lerp(a, b r3.Vec, t float64) r3.Vec { return r3.Add(a, r3.Scale(t, r3.Sub(b, a))) }

// Lean turns a model in space before it is looked at from +Z, by so many radians
// about each axis.
type Lean struct{ X, Y, Z float64 }

// generic keeps places on round numbers from lying exactly behind each other.
var generic = Lean{X: 0.0031, Y: 0.0047, Z: 0.0123}

func (v Lean) turn(a r3.Vec) r3.Vec {
	s, c := math.Sincos(v.X)
	a = r3.Vec{X: a.X, Y: c*a.Y - s*a.Z, Z: s*a.Y + c*a.Z}
	s, c = math.Sincos(v.Y)
	a = r3.Vec{X: c*a.X + s*a.Z, Y: a.Y, Z: c*a.Z - s*a.X}
	s, c = math.Sincos(v.Z)
	return r3.Vec{X: c*a.X - s*a.Y, Y: s*a.X + c*a.Y, Z: a.Z}
}

// Model is a second drawing of a knot: ropes laid through places in space, with
// no crossings declared. What passes over what follows from the places. It is
// made from how a knot is tied, not from its drawing, so that the two can be
// held against each other.
//
// Its text has one instruction a line; remarks begin with #:
//
//	space snell
//	seen across mirrored           how its drawing sees it, with the closed object
//	                               run the other way: reversed; left out, any look does
//	single                         the drawing's doubled line is laid single for it: what is
//	                               wrapped with folded line comes off over the fold, so
//	                               that no closure of the doubled line sees it
//	ring 20,0,0 2                  a closed ring that faces the viewer: centre, radius
//	loop 1,0,0 2,0,0 …             a closed object with these corners
//	bar 10,0,0 -10,0,0             a bar from its bottom or right end to its top or left
//	thick 1.4                      how thick the object is; only package snug asks
//	foot 0,0,0 0,0,-6 3            a bar that holds the object up, from place to place, and how
//	                               thick; no closure has it, and only package snug asks
//	rope                           begins a rope; a number is its width, 1 if left out
//	to 1,0,0 2,0,1 …               straight on to each place
//	coil 0,0,0 4,0,0 1.2 3         round the axis between two places, radius, turns;
//	                               right-handed if positive, from where the rope is
//	cut half                       the first rope is divided here; the name of its first
//	                               part, in the order in which the drawing has them
//	pair 0.6                       the rope so far runs back beside itself; it is divided
//	                               there, "half", unless it is already
//	twin 0.6                       a second rope lies beside the rope so far all along and
//	                               runs the other way
type Model struct {
	ID     string
	Ropes  [][]r3.Vec
	Object []r3.Vec
	// Wide is how wide each rope is, Thick the object; 0: 1. No closure depends on it.
	Wide  []float64
	Thick float64
	// Feet hold the object up; no closure has them.
	Feet  []Foot
	shape tangle.Outline
	parts []string
	cuts  []int
	view  Lean
	seen  *look
	// single: drawings in doubled line are laid single before they are held against it.
	single bool
}

// Foot is a bar that holds an object up.
type Foot struct {
	From, To r3.Vec
	Thick    float64
}

// Of is a model of ropes and an object, closed on itself or a bar, as they lie in space;
// no object where it has no places.
func Of(id string, ropes [][]r3.Vec, object []r3.Vec, ring bool) *Model {
	m := &Model{ID: id, Ropes: ropes, Object: object}
	if len(object) > 0 {
		m.shape = tangle.OpenBar
		if ring {
			m.shape = tangle.ClosedRing
		}
	}
	return m
}

// Parse reads a second drawing. Errors name the line.
func Parse(text string) (*Model, error) {
	s := &Model{}
	for i, line := range strings.Split(text, "\n") {
		line, _, _ = strings.Cut(line, "#")
		w := strings.Fields(line)
		if len(w) == 0 {
			continue
		}
		if err := s.instruct(w[0], w[1:]); err != nil {
			return nil, fmt.Errorf("line %d: %w", i+1, err)
		}
	}
	if s.ID == "" || len(s.Ropes) == 0 || slices.ContainsFunc(s.Ropes, func(r []r3.Vec) bool { return len(r) < 2 }) {
		return nil, problem.New("", "there is no name, or no rope of two places", `begin with "space bowline", then "rope" and "to 0,0,0 1,0,0"`)
	}
	return s, nil
}

func (s *Model) instruct(verb string, w []string) error {
	wants := func(what string) error {
		return problem.New("", verb+" wants "+what, "see the head of core/shape/space/space.go")
	}
	var rope *[]r3.Vec
	if n := len(s.Ropes); n > 0 {
		rope = &s.Ropes[n-1]
	} else if verb == "to" || verb == "coil" || verb == "cut" || verb == "pair" || verb == "twin" {
		return wants("a rope begun before it")
	}
	places, err := vecs(w)
	switch verb {
	case "space":
		if len(w) != 1 {
			return wants("a name")
		}
		s.ID = w[0]
	case "single":
		s.single = true
	case "seen":
		s.seen = &look{}
		for _, x := range w {
			switch x {
			case "across":
				s.seen.across = true
			case "reversed":
				s.seen.reversed = true
			case "mirrored":
				s.seen.mirrored = true
			default:
				return wants("across, reversed, mirrored or nothing")
			}
		}
	case "ring":
		if len(w) != 2 {
			return wants("a centre and a radius")
		}
		c, err := vecs(w[:1])
		if err != nil {
			return err
		}
		r, err := source.Numbers(w[1:], 1)
		if err != nil {
			return err
		}
		for k := range 48 {
			// Clockwise as seen, as the rings of the drawings run.
			sin, cos := math.Sincos(-2 * math.Pi * (float64(k) + 0.37) / 48)
			s.Object = append(s.Object, r3.Add(c[0], r3.Vec{X: r[0] * cos, Y: r[0] * sin}))
		}
		s.shape = tangle.ClosedRing
	case "loop", "bar":
		if err != nil {
			return err
		}
		s.Object, s.shape = places, tangle.ClosedRing
		if verb == "bar" {
			s.shape = tangle.OpenBar
		}
		if len(places) < 2 {
			return wants("two places or more")
		}
	case "foot":
		if len(w) != 3 {
			return wants("two places and a thickness")
		}
		ends, err := vecs(w[:2])
		if err != nil {
			return err
		}
		wide, err := source.Numbers(w[2:], 1)
		if err != nil {
			return err
		}
		s.Feet = append(s.Feet, Foot{ends[0], ends[1], wide[0]})
	case "rope", "thick":
		wide := []float64{1}
		if len(w) > 0 {
			if wide, err = source.Numbers(w, 1); err != nil {
				return err
			}
		}
		if verb == "thick" {
			s.Thick = wide[0]
			break
		}
		s.Ropes, s.Wide = append(s.Ropes, nil), append(s.Wide, wide[0])
	case "to":
		if err != nil {
			return err
		}
		*rope = append(*rope, places...)
	case "coil":
		if len(w) != 4 || len(*rope) == 0 {
			return wants("a place to begin from, two places of its axis, a radius and turns")
		}
		axis, err := vecs(w[:2])
		if err != nil {
			return err
		}
		v, err := source.Numbers(w[2:], 2)
		if err != nil {
			return err
		}
		*rope = append(*rope, coil((*rope)[len(*rope)-1], axis[0], axis[1], v[0], v[1])...)
	case "cut":
		if len(w) == 0 || len(*rope) < 2 {
			return wants("the name of the first part, and rope before it")
		}
		s.parts, s.cuts = append(s.parts, strings.Join(w, " ")), append(s.cuts, len(*rope))
		at := r3.Sub((*rope)[len(*rope)-1], (*rope)[len(*rope)-2])
		last := (*rope)[len(*rope)-1]
		*rope = append(*rope, r3.Add(last, r3.Scale(2*tangle.Sliver/r3.Norm(at), at))) // the rest begins here
	case "pair":
		v, err := source.Numbers(w, 1)
		if err != nil {
			return err
		}
		if len(*rope) < 2 {
			return wants("rope before it")
		}
		there, back := beside(*rope, v[0]/2), beside(*rope, -v[0]/2)
		slices.Reverse(back)
		if len(s.parts) == 0 {
			s.parts, s.cuts = []string{"half"}, []int{len(there) + 1}
			// Divided in the middle of its bight, a sliver apart.
			a, b := there[len(there)-1], back[0]
			mid := tangle.Sliver / r3.Norm(r3.Sub(a, b))
			there = append(there, lerp(a, b, 0.5-mid))
			back = append([]r3.Vec{lerp(a, b, 0.5+mid)}, back...)
		}
		*rope = append(there, back...)
	case "twin":
		v, err := source.Numbers(w, 1)
		if err != nil {
			return err
		}
		if len(*rope) < 2 {
			return wants("rope before it")
		}
		twin := beside(*rope, -v[0]/2)
		slices.Reverse(twin)
		*rope = beside(*rope, v[0]/2)
		s.Ropes, s.Wide = append(s.Ropes, twin), append(s.Wide, 1)
	default:
		return problem.New("", fmt.Sprintf("%q is no instruction", verb), "use space, seen, single, ring, loop, bar, thick, foot, rope, to, coil, cut, pair or twin")
	}
	return nil
}

func vecs(words []string) ([]r3.Vec, error) {
	out := make([]r3.Vec, len(words))
	for i, w := range words {
		v, err := source.Numbers(strings.Split(w, ","), 3)
		if err != nil {
			return nil, problem.New("", fmt.Sprintf("%q is not a place", w), `write "1,2,0": to the right, up, toward the viewer`)
		}
		out[i] = r3.Vec{X: v[0], Y: v[1], Z: v[2]}
	}
	return out, nil
}

// coil runs round the axis a–b from the angle at which from lies.
func coil(from, a, b r3.Vec, r, turns float64) []r3.Vec {
	axis := r3.Unit(r3.Sub(b, a))
	out := r3.Sub(from, a)
	out = r3.Sub(out, r3.Scale(r3.Dot(out, axis), axis))
	u := r3.Scale(r/r3.Norm(out), out)
	v := r3.Cross(axis, u)
	n := int(math.Ceil(24 * math.Abs(turns)))
	path := make([]r3.Vec, n+1)
	for k := range path {
		t := float64(k) / float64(n)
		sin, cos := math.Sincos(2 * math.Pi * turns * t)
		path[k] = r3.Add(lerp(a, b, t), r3.Add(r3.Scale(cos, u), r3.Scale(sin, v)))
	}
	return path
}

// beside moves a path sideways, as seen, by d.
func beside(path []r3.Vec, d float64) []r3.Vec {
	out := make([]r3.Vec, len(path))
	for i, p := range path {
		var n curve.Point
		for _, k := range []int{i - 1, i} {
			if k < 0 || k+1 >= len(path) {
				continue
			}
			if t := seen(path[k+1]).Sub(seen(path[k])); t.Len() > 1e-9 {
				t = t.Unit()
				n = n.Add(curve.Pt(-t.Y, t.X))
			}
		}
		if n.Len() > 1e-9 {
			n = n.Times(2 * d / math.Max(n.Dot(n), 0.5)) // mitred
			if i == 0 || i == len(path)-1 {
				n = n.Times(0.5)
			}
		}
		out[i] = r3.Add(p, r3.Vec{X: n.X, Y: -n.Y})
	}
	return out
}

// Seen is the model in space as its drawing sees it: turned over and mirrored as it says.
func (s *Model) Seen() (ropes [][]r3.Vec, object []r3.Vec, ring bool) {
	if s.seen != nil && s.seen.across {
		s = s.across()
	}
	lay := func(path []r3.Vec) []r3.Vec {
		out := make([]r3.Vec, len(path))
		for i, p := range path {
			if out[i] = s.view.turn(p); s.seen != nil && s.seen.mirrored {
				out[i].X = -out[i].X
			}
		}
		return out
	}
	for _, r := range s.Ropes {
		ropes = append(ropes, lay(r))
	}
	return ropes, lay(s.Object), s.shape == tangle.ClosedRing
}

// Closures closes the model by the rules of [tangle.Of].
func (s *Model) Closures() []tangle.Closure {
	return tangle.Closures(s, len(s.Ropes), s.shape, s.parts)
}

// Leaned is the same model seen from a little to one side: a check that nothing
// in it hides behind something else.
func (s *Model) Leaned(v Lean) *Model {
	out := *s
	out.view = v
	return &out
}

// reversed is the model with a closed object run the other way round.
func (s *Model) reversed() *Model {
	if s.shape != tangle.ClosedRing {
		return s
	}
	out := *s
	out.Object = slices.Clone(s.Object)
	slices.Reverse(out.Object)
	return &out
}

// Strand gives a rope or the axis of a bar as a polygon, as seen.
func (s *Model) Strand(ref tangle.Ref) []tangle.Vertex {
	path := s.Object
	if !ref.Object {
		path = s.Ropes[ref.Index]
		switch ref.Share {
		case tangle.First:
			path = path[:s.cuts[ref.Cut]]
		case tangle.Rest:
			path = path[s.cuts[ref.Cut]:]
		}
	}
	if ref.Reverse {
		path = slices.Clone(path)
		slices.Reverse(path)
	}
	return s.vertices(path, ref)
}

func (s *Model) vertices(path []r3.Vec, ref tangle.Ref) []tangle.Vertex {
	out := make([]tangle.Vertex, len(path))
	for i, p := range path {
		p = turned(p, s.view)
		q := turned(path[(i+1)%len(path)], s.view)
		out[i] = tangle.Vertex{At: seen(p), Ref: ref, Z: p.Z, Rise: q.Z - p.Z}
	}
	return out
}

// FarAway closes the object on itself without passing near the ropes.
func (s *Model) FarAway(ref tangle.Ref) []tangle.Vertex {
	path := s.Object
	if s.shape == tangle.OpenBar {
		big := 0.0
		for _, r := range s.Ropes {
			for _, p := range r {
				big = math.Max(big, r3.Norm(p))
			}
		}
		a, b := path[0], path[len(path)-1]
		dir := r3.Scale(big+5, r3.Unit(r3.Sub(b, a)))
		side := r3.Scale(3, r3.Vec{X: -dir.Y, Y: dir.X})
		path = append([]r3.Vec{r3.Sub(a, dir)}, path...)
		path = append(path, r3.Add(b, dir), r3.Add(r3.Add(b, dir), side), r3.Add(r3.Sub(a, dir), side))
	}
	return s.vertices(path, ref)
}

// Over goes by how near the two are to the viewer.
func (s *Model) Over(p, q tangle.Vertex, t, u float64) (bool, int) {
	return p.Z+t*p.Rise > q.Z+u*q.Rise, -1
}

// Clearance is the least distance, in the line of sight, between two strands that
// cross as seen: too small, and it is left to chance which is over.
func (s *Model) Clearance() float64 {
	least := math.Inf(1)
	k := strandsOf(s)
	for a := range k {
		for b := a; b < len(k); b++ {
			for i := range len(k[a]) - 1 {
				from := 0
				if a == b {
					from = i + 2
				}
				for j := from; j < len(k[b])-1; j++ {
					p, q := k[a][i], k[b][j]
					if t, u, ok := curve.Meet(p.At, k[a][i+1].At, q.At, k[b][j+1].At); ok {
						least = math.Min(least, math.Abs(p.Z+t*p.Rise-q.Z-u*q.Rise))
					}
				}
			}
		}
	}
	return least
}

func strandsOf(s *Model) [][]tangle.Vertex {
	var out [][]tangle.Vertex
	for i := range s.Ropes {
		out = append(out, s.Strand(tangle.Ref{Index: i}))
	}
	if s.shape != tangle.NoObject {
		path := s.Strand(tangle.Ref{Object: true})
		if s.shape == tangle.ClosedRing {
			path = append(path, path[0])
		}
		out = append(out, path)
	}
	return out
}

// look is one way to see a model: from across, a closed object run the other way
// round, in the mirror.
type look struct{ across, reversed, mirrored bool }

// Matches holds the model against a drawing: every closure must agree. Where the
// model does not say how the drawing sees it, every look is tried: the closing
// arcs, which are in front, then pass on its other side, or all is mirrored.
func (s *Model) Matches(sh *shape.Shape) error {
	if s.single {
		sh = sh.Single()
	}
	drawn := tangle.Of(sh)
	var least *problem.List
	fewest := len(drawn) + 1
	for _, across := range []bool{false, true} {
		for _, reversed := range []bool{false, true} {
			var closures []tangle.Closure
			for _, mirrored := range []bool{false, true} {
				if s.seen != nil && *s.seen != (look{across, reversed, mirrored}) {
					continue
				}
				if closures == nil {
					closures = s.turned(across, reversed).Closures()
				}
				if l, n := differences(s.ID, drawn, closures, mirrored); n < fewest {
					least, fewest = l, n
				}
			}
		}
	}
	return least.Err()
}

func (s *Model) turned(across, reversed bool) *Model {
	if across {
		s = s.across()
	}
	if reversed {
		s = s.reversed()
	}
	return s
}

// across is the model turned over about the axis of its bar, so that the bar still
// runs from bottom or right to top or left.
func (s *Model) across() *Model {
	if s.shape == tangle.OpenBar {
		if d := r3.Sub(s.Object[len(s.Object)-1], s.Object[0]); math.Abs(d.X) > math.Abs(d.Y) {
			return s.Leaned(Lean{X: math.Pi})
		}
	}
	return s.Leaned(Lean{Y: math.Pi})
}

func differences(id string, drawn, model []tangle.Closure, mirrored bool) (l *problem.List, n int) {
	l = &problem.List{}
	if len(drawn) != len(model) {
		l.Add(id, fmt.Sprintf("has %d closures, its second drawing %d", len(drawn), len(model)), "give both the same object, or divide the rope in both")
		return l, len(drawn)
	}
	for i, d := range drawn {
		m := model[i]
		link, jones := m.Linking, tangle.Terms(m.Jones)
		if mirrored {
			link, jones = make([]int, len(m.Linking)), map[int]int64{}
			for k, v := range m.Linking {
				link[k] = -v
			}
			for e, v := range tangle.Terms(m.Jones) {
				jones[-e] = v
			}
		}
		if d.Name != m.Name || !slices.Equal(d.Linking, link) || d.Alexander != m.Alexander || !maps.Equal(tangle.Terms(d.Jones), jones) {
			n++
			l.Add(id+" "+d.Name, fmt.Sprintf("is %v %s, Jones %s; in its second drawing %v %s, Jones %s", d.Linking, d.Alexander, d.Jones, link, m.Alexander, m.Jones),
				"trace both against how the knot is tied")
		}
	}
	return l, n
}
