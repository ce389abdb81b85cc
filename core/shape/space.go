package shape

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"oarweed/core/problem"
)

// Vec is a place in space: X to the right, Y up, Z toward the viewer.
type Vec struct{ X, Y, Z float64 }

func (a Vec) add(b Vec) Vec           { return Vec{a.X + b.X, a.Y + b.Y, a.Z + b.Z} }
func (a Vec) sub(b Vec) Vec           { return Vec{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }
func (a Vec) times(k float64) Vec     { return Vec{a.X * k, a.Y * k, a.Z * k} }
func (a Vec) dot(b Vec) float64       { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }
func (a Vec) cross(b Vec) Vec         { return Vec{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X} }
func (a Vec) len() float64            { return math.Sqrt(a.dot(a)) }
func (a Vec) seen() Point             { return Point{a.X, -a.Y} }
func (a Vec) turned(v Lean) Vec       { return v.turn(generic.turn(a)) }
func lerpVec(a, b Vec, t float64) Vec { return a.add(b.sub(a).times(t)) }

// Lean turns a model in space before it is looked at from +Z, by so many radians
// about each axis.
type Lean struct{ X, Y, Z float64 }

// generic keeps places on round numbers from lying exactly behind each other.
var generic = Lean{0.0031, 0.0047, 0.0123}

func (v Lean) turn(a Vec) Vec {
	s, c := math.Sincos(v.X)
	a = Vec{a.X, c*a.Y - s*a.Z, s*a.Y + c*a.Z}
	s, c = math.Sincos(v.Y)
	a = Vec{c*a.X + s*a.Z, a.Y, c*a.Z - s*a.X}
	s, c = math.Sincos(v.Z)
	return Vec{c*a.X - s*a.Y, s*a.X + c*a.Y, a.Z}
}

// Space is a second drawing of a knot: ropes laid through places in space, with
// no crossings declared. What passes over what follows from the places. It is
// made from how a knot is tied, not from its drawing, so that the two can be
// held against each other.
//
// Its text has one instruction a line; remarks begin with #:
//
//	space snell
//	seen across mirrored           how its drawing sees it, with the closed object
//	                               run the other way: reversed; left out, any look does
//	ring 20,0,0 2                  a closed ring that faces the viewer: centre, radius
//	loop 1,0,0 2,0,0 …             a closed object with these corners
//	bar 10,0,0 -10,0,0             a bar from its bottom or right end to its top or left
//	rope                           begins a rope
//	to 1,0,0 2,0,1 …               straight on to each place
//	coil 0,0,0 4,0,0 1.2 3         round the axis between two places, radius, turns;
//	                               right-handed if positive, from where the rope is
//	cut half                       the first rope is divided here; the name of its first
//	                               part, in the order in which the drawing has them
//	pair 0.6                       the rope so far runs back beside itself; it is divided
//	                               there, "half", unless it is already
type Space struct {
	ID     string
	Ropes  [][]Vec
	Object []Vec
	shape  outline
	parts  []string
	cuts   []int
	view   Lean
	seen   *look
}

// ParseSpace reads a second drawing. Errors name the line.
func ParseSpace(text string) (*Space, error) {
	s := &Space{}
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
	if s.ID == "" || len(s.Ropes) == 0 || slices.ContainsFunc(s.Ropes, func(r []Vec) bool { return len(r) < 2 }) {
		return nil, problem.New("", "there is no name, or no rope of two places", `begin with "space bowline", then "rope" and "to 0,0,0 1,0,0"`)
	}
	return s, nil
}

func (s *Space) instruct(verb string, w []string) error {
	wants := func(what string) error {
		return problem.New("", verb+" wants "+what, "see the head of core/shape/space.go")
	}
	var rope *[]Vec
	if n := len(s.Ropes); n > 0 {
		rope = &s.Ropes[n-1]
	} else if verb == "to" || verb == "coil" || verb == "cut" || verb == "pair" {
		return wants("a rope begun before it")
	}
	places, err := vecs(w)
	switch verb {
	case "space":
		if len(w) != 1 {
			return wants("a name")
		}
		s.ID = w[0]
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
		r, err := numbers(w[1:], 1)
		if err != nil {
			return err
		}
		for k := range 48 {
			// Clockwise as seen, as the rings of the drawings run.
			sin, cos := math.Sincos(-2 * math.Pi * (float64(k) + 0.37) / 48)
			s.Object = append(s.Object, c[0].add(Vec{r[0] * cos, r[0] * sin, 0}))
		}
		s.shape = ring
	case "loop", "bar":
		if err != nil {
			return err
		}
		s.Object, s.shape = places, ring
		if verb == "bar" {
			s.shape = bar
		}
		if len(places) < 2 {
			return wants("two places or more")
		}
	case "rope":
		s.Ropes = append(s.Ropes, nil)
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
		v, err := numbers(w[2:], 2)
		if err != nil {
			return err
		}
		*rope = append(*rope, coil((*rope)[len(*rope)-1], axis[0], axis[1], v[0], v[1])...)
	case "cut":
		if len(w) == 0 || len(*rope) < 2 {
			return wants("the name of the first part, and rope before it")
		}
		s.parts, s.cuts = append(s.parts, strings.Join(w, " ")), append(s.cuts, len(*rope))
		at := (*rope)[len(*rope)-1].sub((*rope)[len(*rope)-2])
		last := (*rope)[len(*rope)-1]
		*rope = append(*rope, last.add(at.times(2*sliver/at.len()))) // the rest begins here
	case "pair":
		v, err := numbers(w, 1)
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
			mid := sliver / a.sub(b).len()
			there = append(there, lerpVec(a, b, 0.5-mid))
			back = append([]Vec{lerpVec(a, b, 0.5+mid)}, back...)
		}
		*rope = append(there, back...)
	default:
		return problem.New("", fmt.Sprintf("%q is no instruction", verb), "use space, seen, ring, loop, bar, rope, to, coil, cut or pair")
	}
	return nil
}

func vecs(words []string) ([]Vec, error) {
	out := make([]Vec, len(words))
	for i, w := range words {
		v, err := numbers(strings.Split(w, ","), 3)
		if err != nil {
			return nil, problem.New("", fmt.Sprintf("%q is not a place", w), `write "1,2,0": to the right, up, toward the viewer`)
		}
		out[i] = Vec{v[0], v[1], v[2]}
	}
	return out, nil
}

// coil runs round the axis a–b from the angle at which from lies.
func coil(from, a, b Vec, r, turns float64) []Vec {
	axis := b.sub(a)
	axis = axis.times(1 / axis.len())
	out := from.sub(a)
	out = out.sub(axis.times(out.dot(axis)))
	u := out.times(r / out.len())
	v := axis.cross(u)
	n := int(math.Ceil(24 * math.Abs(turns)))
	path := make([]Vec, n+1)
	for k := range path {
		t := float64(k) / float64(n)
		sin, cos := math.Sincos(2 * math.Pi * turns * t)
		path[k] = lerpVec(a, b, t).add(u.times(cos)).add(v.times(sin))
	}
	return path
}

// beside moves a path sideways, as seen, by d.
func beside(path []Vec, d float64) []Vec {
	out := make([]Vec, len(path))
	for i, p := range path {
		var n Point
		for _, k := range []int{i - 1, i} {
			if k < 0 || k+1 >= len(path) {
				continue
			}
			if t := path[k+1].seen().sub(path[k].seen()); t.len() > 1e-9 {
				t = t.unit()
				n = n.add(Point{-t.Y, t.X})
			}
		}
		if n.len() > 1e-9 {
			n = n.times(2 * d / math.Max(n.dot(n), 0.5)) // mitred
			if i == 0 || i == len(path)-1 {
				n = n.times(0.5)
			}
		}
		out[i] = p.add(Vec{n.X, -n.Y, 0})
	}
	return out
}

// Closures closes the model by the rules of [Shape.Closures].
func (s *Space) Closures() []Closure {
	return closures(s, append(plans(len(s.Ropes), s.shape), partPlans(len(s.Ropes), s.shape, s.parts)...))
}

// Leaned is the same model seen from a little to one side: a check that nothing
// in it hides behind something else.
func (s *Space) Leaned(v Lean) *Space {
	out := *s
	out.view = v
	return &out
}

// reversed is the model with a closed object run the other way round.
func (s *Space) reversed() *Space {
	if s.shape != ring {
		return s
	}
	out := *s
	out.Object = slices.Clone(s.Object)
	slices.Reverse(out.Object)
	return &out
}

func (s *Space) strand(ref strandRef) []corner {
	path := s.Object
	if !ref.object {
		path = s.Ropes[ref.index]
		switch ref.share {
		case first:
			path = path[:s.cuts[ref.cut]]
		case rest:
			path = path[s.cuts[ref.cut]:]
		}
	}
	if ref.reverse {
		path = slices.Clone(path)
		slices.Reverse(path)
	}
	return s.corners(path, ref)
}

func (s *Space) corners(path []Vec, ref strandRef) []corner {
	out := make([]corner, len(path))
	for i, p := range path {
		p = p.turned(s.view)
		q := path[(i+1)%len(path)].turned(s.view)
		out[i] = corner{at: p.seen(), ref: ref, z: p.Z, rise: q.Z - p.Z}
	}
	return out
}

func (s *Space) farAway(ref strandRef) []corner {
	path := s.Object
	if s.shape == bar {
		big := 0.0
		for _, r := range s.Ropes {
			for _, p := range r {
				big = math.Max(big, p.len())
			}
		}
		a, b := path[0], path[len(path)-1]
		dir := b.sub(a)
		dir = dir.times((big + 5) / dir.len())
		side := Vec{-dir.Y, dir.X, 0}.times(3)
		path = append([]Vec{a.sub(dir)}, path...)
		path = append(path, b.add(dir), b.add(dir).add(side), a.sub(dir).add(side))
	}
	return s.corners(path, ref)
}

// over goes by how near the two are to the viewer.
func (s *Space) over(p, q corner, t, u float64) (bool, int) {
	return p.z+t*p.rise > q.z+u*q.rise, -1
}

// Clearance is the least distance, in the line of sight, between two strands that
// cross as seen: too small, and it is left to chance which is over.
func (s *Space) Clearance() float64 {
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
					if t, u, ok := meet(p.at, k[a][i+1].at, q.at, k[b][j+1].at); ok {
						least = math.Min(least, math.Abs(p.z+t*p.rise-q.z-u*q.rise))
					}
				}
			}
		}
	}
	return least
}

func strandsOf(s *Space) [][]corner {
	var out [][]corner
	for i := range s.Ropes {
		out = append(out, s.strand(strandRef{index: i}))
	}
	if s.shape != none {
		path := s.strand(strandRef{object: true})
		if s.shape == ring {
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
func (s *Space) Matches(sh *Shape) error {
	drawn := sh.Closures()
	var least *problem.List
	fewest := len(drawn) + 1
	for _, across := range []bool{false, true} {
		for _, reversed := range []bool{false, true} {
			var closures []Closure
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

func (s *Space) turned(across, reversed bool) *Space {
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
func (s *Space) across() *Space {
	if s.shape == bar {
		if d := s.Object[len(s.Object)-1].sub(s.Object[0]); math.Abs(d.X) > math.Abs(d.Y) {
			return s.Leaned(Lean{X: math.Pi})
		}
	}
	return s.Leaned(Lean{Y: math.Pi})
}

func differences(id string, drawn, model []Closure, mirrored bool) (l *problem.List, n int) {
	l = &problem.List{}
	if len(drawn) != len(model) {
		l.Add(id, fmt.Sprintf("has %d closures, its second drawing %d", len(drawn), len(model)), "give both the same object, or divide the rope in both")
		return l, len(drawn)
	}
	for i, d := range drawn {
		m := model[i]
		link, jones := m.Linking, terms(m.Jones)
		if mirrored {
			link, jones = make([]int, len(m.Linking)), map[int]int64{}
			for k, v := range m.Linking {
				link[k] = -v
			}
			for e, v := range terms(m.Jones) {
				jones[-e] = v
			}
		}
		if d.Name != m.Name || !slices.Equal(d.Linking, link) || d.Alexander != m.Alexander || !maps.Equal(terms(d.Jones), jones) {
			n++
			l.Add(id+" "+d.Name, fmt.Sprintf("is %v %s, Jones %s; in its second drawing %v %s, Jones %s", d.Linking, d.Alexander, d.Jones, link, m.Alexander, m.Jones),
				"trace both against how the knot is tied")
		}
	}
	return l, n
}
