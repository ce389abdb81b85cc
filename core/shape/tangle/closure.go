package tangle

import (
	"fmt"
	"sort"

	"oarweed/core/shape/curve"
)

// Closure is a closed diagram made from a shape by a stated rule, with what can
// be computed from it.
type Closure struct {
	Name       string `json:"name"`
	Crossings  int    `json:"crossings"`
	Components int    `json:"components"`
	// Linking holds the linking numbers of the pairs of components 1-2, 1-3, 2-3 …
	Linking     []int  `json:"linking"`
	Determinant int64  `json:"determinant"`
	Alexander   string `json:"alexander"`
	Jones       string `json:"jones"`
	// PD is the planar diagram code: for each crossing the four edges met
	// counter-clockwise from the incoming lower one, edges numbered from 1.
	PD [][4]int `json:"pd"`
}

// Closures closes a knot of so many ropes by every rule that applies. parts names the
// first parts of its first rope, where that is divided.
func Closures(k Strands, ropes int, object Outline, parts []string) []Closure {
	return closeAll(k, append(plans(ropes, object), partPlans(ropes, object, parts)...))
}

func closeAll(k Strands, all []plan) []Closure {
	out := make([]Closure, len(all))
	for i, p := range all {
		out[i] = closed(k, p).Turned(nil)
		out[i].Name = p.name
	}
	return out
}

// Diagrams closes a knot as a whole by every rule that applies.
func Diagrams(k Strands, ropes int, object Outline) []Diagram {
	var out []Diagram
	for _, p := range plans(ropes, object) {
		out = append(out, closed(k, p))
	}
	return out
}

// Both closes a knot as a whole and each of its ropes by itself, every time in front and
// behind.
func Both(k Strands, ropes int, object Outline) []Diagram {
	all := append(plans(ropes, object), partPlans(ropes, object, nil)...)
	if ropes == 2 {
		all = append(all, behind(plans(ropes, object))...)
	}
	out := make([]Diagram, len(all))
	for i, p := range all {
		out[i] = closed(k, p)
	}
	return out
}

// Strands is a knot whose open ends can be closed.
type Strands interface {
	// Strand gives a rope or the axis of a bar as a polygon.
	Strand(Ref) []Vertex
	// FarAway gives an object closed on itself without passing near the rope.
	FarAway(Ref) []Vertex
	// Over tells whether the segment beginning at p passes over the one beginning at
	// q where they meet, at the shares t and u of their lengths, and which declared
	// crossing that is, −1 if none.
	Over(p, q Vertex, t, u float64) (over bool, declared int)
}

// Ref is a rope or an object's axis, run forward or back.
type Ref struct {
	Object  bool
	Index   int
	Reverse bool
	Share   Share
	Cut     int // which of the places where it is divided
}

// Sliver is what is cut out where a rope is divided, so that its two ends are
// apart.
const Sliver = 0.05

// Share of a rope to close by itself.
type Share int

const (
	Whole Share = iota
	First       // as far as a place where it is divided
	Rest        // from there on
)

// plan says which strands follow each other round each component; arcs close
// the gaps between them.
type plan struct {
	name       string
	components [][]Ref
	behind     bool
}

// Outline is how an object is closed.
type Outline int

const (
	NoObject   Outline = iota
	ClosedRing         // closed already, or closed far away only
	OpenBar            // its ends can be joined to the rope's
)

func (s Ref) back() Ref { s.Reverse = !s.Reverse; return s }

// join gives the plans of two strands: N, X and D.
func join(prefix string, a, b Ref) []plan {
	return []plan{
		{name: prefix + "N", components: [][]Ref{{a, b.back()}}},
		{name: prefix + "X", components: [][]Ref{{a, b}}},
		{name: prefix + "D", components: [][]Ref{{a}, {b}}},
	}
}

// plans closes the knot as a whole.
func plans(ropes int, object Outline) []plan {
	a, o := Ref{}, Ref{Object: true}
	switch {
	case ropes == 2:
		return join("", a, Ref{Index: 1})
	case object != NoObject:
		p := []plan{{name: "L", components: [][]Ref{{a}, {o}}}}
		if object == OpenBar {
			// The axis runs from bottom (right) to top (left) when not reversed.
			p = append(p, plan{name: "K1", components: [][]Ref{{a, o}}}, plan{name: "K2", components: [][]Ref{{a, o.back()}}})
		}
		return append(p, behind(p)...)
	}
	return []plan{{name: "front", components: [][]Ref{{a}}}, {name: "behind", components: [][]Ref{{a}}, behind: true}}
}

// behind gives the same plans with their arcs behind everything: a last pass that lies
// over all vanishes under an arc in front, and shows under one behind.
func behind(plans []plan) []plan {
	out := make([]plan, len(plans))
	for i, p := range plans {
		p.name, p.behind = p.name+" behind", true
		out[i] = p
	}
	return out
}

// partPlans closes parts of the knot by themselves; parts names the first parts of
// a rope divided at so many places.
func partPlans(ropes int, object Outline, parts []string) []plan {
	one := func(name string, s Ref) plan { return plan{name: name, components: [][]Ref{{s}}} }
	if ropes == 2 {
		each := []plan{one("1", Ref{}), one("2", Ref{Index: 1})}
		return append(each, behind(each)...)
	}
	var out []plan
	if object != NoObject {
		alone := []plan{one("alone", Ref{})}
		out = append(append(out, alone...), behind(alone)...)
	}
	for i, part := range parts {
		prefix := "cut "
		if i > 0 {
			prefix = fmt.Sprintf("cut %d ", i+1)
		}
		a, b := Ref{Share: First, Cut: i}, Ref{Share: Rest, Cut: i}
		cut := join(prefix, a, b)
		if object != NoObject {
			cut[2].components = append(cut[2].components, []Ref{{Object: true}})
		}
		out = append(append(out, one(part, a)), cut...)
	}
	return out
}

// Vertex is a vertex of a diagram; the segment that begins there belongs to the
// strand named and, on a rope, to the arc length given.
type Vertex struct {
	At    curve.Point
	Level int // 0 the knot itself; ±1, ±2 … closing arcs in front or behind
	Ref   Ref
	S     float64
	// Z and Rise are used by models in space: how near the vertex is to the viewer,
	// and how much nearer the next.
	Z, Rise float64
}

// Diagram is a set of closed polygons with a rule for over and under.
type Diagram struct {
	Strands
	// Name of the rule by which it is closed.
	Name  string
	comps [][]Vertex
}

// closed closes the ends of a knot as planned.
func closed(k Strands, p plan) Diagram {
	d := Diagram{Strands: k, Name: p.name}
	arc := 0
	for _, refs := range p.components {
		var poly []Vertex
		for i, ref := range refs {
			if len(refs) == 1 && ref.Object {
				poly = append(poly, k.FarAway(ref)...)
				continue
			}
			poly = append(poly, k.Strand(ref)...)
			arc++
			level := arc
			if p.behind {
				level = -arc
			}
			next := k.Strand(refs[(i+1)%len(refs)])[0].At
			last := poly[len(poly)-1].At
			// A bent arc, so that it meets no strand end on; being in front of
			// everything (or behind), its course does not matter.
			mid := curve.Lerp(last, next, 0.5).Add(curve.Pt(0.0173, 0.0291).Times(float64(arc)))
			poly[len(poly)-1].Level = level
			poly = append(poly, Vertex{At: mid, Level: level})
		}
		d.comps = append(d.comps, poly)
	}
	return d
}

// Crossing is a crossing of a closed diagram: where its two strands p and q run,
// which of them is over, and which declared crossing of the drawing it is, −1 for
// those made by objects and closing arcs.
type Crossing struct {
	p, q     pass
	pOver    bool
	declared int
}

// pass of a component through a crossing.
type pass struct {
	comp  int
	along float64 // segment number plus fraction
	dir   curve.Point
}

// visit is a pass with its side known.
type visit struct {
	pass
	x    int
	over bool
}

// Crossings finds all crossings of the diagram.
func (d Diagram) Crossings() []Crossing {
	var out []Crossing
	boxes := make([][]box, len(d.comps))
	for i, c := range d.comps {
		boxes[i] = boxesOf(c)
	}
	for a := range d.comps {
		for b := a; b < len(d.comps); b++ {
			pa, pb := d.comps[a], d.comps[b]
			for i := range pa {
				here := boxes[a][i]
				from := 0
				if a == b {
					from = i + 2
				}
				for j := from; j < len(pb); j++ {
					if here.apart(boxes[b][j]) || a == b && i == 0 && j == len(pb)-1 {
						continue
					}
					p0, p1, q0, q1 := pa[i], pa[(i+1)%len(pa)], pb[j], pb[(j+1)%len(pb)]
					t, u, ok := curve.Meet(p0.At, p1.At, q0.At, q1.At)
					if !ok {
						continue
					}
					over, declared := p0.Level > q0.Level, -1
					if p0.Level == q0.Level {
						over, declared = d.Over(p0, q0, t, u)
					}
					out = append(out, Crossing{
						pass{a, float64(i) + t, p1.At.Sub(p0.At)},
						pass{b, float64(j) + u, q1.At.Sub(q0.At)}, over, declared})
				}
			}
		}
	}
	return out
}

// box is what a segment lies in.
type box struct{ left, right, bottom, top float64 }

// boxesOf gives the box of every segment of a closed polygon, a little wider than it:
// almost all pairs of segments are told apart by them alone.
func boxesOf(p []Vertex) []box {
	const wider = 1e-9
	out := make([]box, len(p))
	for i := range p {
		a, b := p[i].At, p[(i+1)%len(p)].At
		out[i] = box{min(a.X, b.X) - wider, max(a.X, b.X) + wider, min(a.Y, b.Y) - wider, max(a.Y, b.Y) + wider}
	}
	return out
}

func (b *box) apart(c box) bool {
	return b.right < c.left || c.right < b.left || b.top < c.bottom || c.top < b.bottom
}

// Jones gives the linking numbers and the Jones polynomial of the diagram alone: most of the
// work of an invariant is the Alexander polynomial's.
func (d Diagram) Jones() (linking []int, jones string) {
	return JonesOf(d.Crossings(), len(d.comps), nil)
}

// JonesOf is the same from its crossings, some of them turned over.
func JonesOf(crossings []Crossing, components int, flipped []bool) (linking []int, jones string) {
	code, out := coded(visitsOf(crossings, flipped), components)
	return out.Linking, code.jones().text("t", 1)
}

// Turned computes the invariants of the diagram; flipped, by number of declared crossing,
// turns crossings over first.
func (d Diagram) Turned(flipped []bool) Closure {
	return ClosureOf(d.Crossings(), len(d.comps), flipped)
}

// Components is the number of closed polygons.
func (d Diagram) Components() int { return len(d.comps) }

// ClosureOf computes the invariants of a diagram from its crossings, some of them turned
// over.
func ClosureOf(crossings []Crossing, components int, flipped []bool) Closure {
	return fromVisits(visitsOf(crossings, flipped), components)
}

func visitsOf(crossings []Crossing, flipped []bool) []visit {
	visits := make([]visit, 0, 2*len(crossings))
	for n, m := range crossings {
		over := m.pOver != (m.declared >= 0 && m.declared < len(flipped) && flipped[m.declared])
		visits = append(visits, visit{m.p, n, over}, visit{m.q, n, !over})
	}
	return visits
}

// fromVisits computes the invariants of a diagram.
func fromVisits(visits []visit, components int) Closure {
	code, out := coded(visits, components)
	alex := code.alexander()
	out.Alexander = alex.text("t", 2)
	out.Determinant = alex.absAtMinusOne()
	out.Jones = code.jones().text("t", 1)
	return out
}

// coded numbers the edges and writes the planar diagram code, and what follows from it at once.
func coded(visits []visit, components int) (pd, Closure) {
	n := len(visits) / 2
	sort.SliceStable(visits, func(i, j int) bool {
		if visits[i].comp != visits[j].comp {
			return visits[i].comp < visits[j].comp
		}
		return visits[i].along < visits[j].along
	})
	type ends struct {
		comp, in, out int
		dir           curve.Point
	}
	over, under := make([]ends, n), make([]ends, n)
	edge, loose := 0, 0
	for c := range components {
		var mine []visit
		for _, h := range visits {
			if h.comp == c {
				mine = append(mine, h)
			}
		}
		if len(mine) == 0 {
			loose++ // a circle that meets nothing
		}
		for k, h := range mine {
			e := ends{c, edge + 1 + k, edge + 1 + (k+1)%len(mine), curve.Pt(h.dir.X, -h.dir.Y)}
			if h.over {
				over[h.x] = e
			} else {
				under[h.x] = e
			}
		}
		edge += len(mine)
	}
	code := pd{loose: loose}
	link := make([]int, components*components)
	for x := range n {
		u, o := under[x], over[x]
		sign := 1
		if o.dir.Cross(u.dir) > 0 {
			// right-handed: seen along the lower strand the upper one runs from left to right
			code.x = append(code.x, [4]int{u.in, o.out, u.out, o.in})
		} else {
			sign = -1
			code.x = append(code.x, [4]int{u.in, o.in, u.out, o.out})
		}
		code.sign = append(code.sign, sign)
		if u.comp != o.comp {
			link[min(u.comp, o.comp)*components+max(u.comp, o.comp)] += sign
		}
	}
	out := Closure{Crossings: n, Components: components, PD: append([][4]int{}, code.x...), Linking: []int{}}
	for a := range components {
		for b := a + 1; b < components; b++ {
			out.Linking = append(out.Linking, link[a*components+b]/2)
		}
	}
	return code, out
}
