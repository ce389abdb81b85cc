package shape

import (
	"fmt"
	"math"
	"slices"
	"sort"
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

// Closures closes the open ends by every rule that applies and computes the
// invariants of each:
//
//   - one rope, no object: "front" joins end to start in front of everything,
//     "behind" behind everything;
//   - one rope on an object: "L" closes the rope in front and the object far
//     away; on a bar also "K1" (top of the bar to the rope's start, its bottom to
//     the rope's end) and "K2" (the other way round), in front;
//   - two ropes: "N" joins standing part to standing part and tail to tail, "X"
//     each standing part to the other's tail, "D" each rope to itself;
//   - parts by themselves, closed in front: "alone" a rope without its object,
//     "1" and "2" the ropes of a bend, "half" a doubled rope up to its bight,
//     "begun" the first rope up to the step that the source names, "part" up to a
//     place that it names;
//   - where a rope is so divided, also its two parts as if they were two ropes,
//     each run in the rope's direction: "cut N", "cut X" and "cut D", the last
//     with the object; for a second place "part 2", "cut 2 N" and so on. A form
//     made in the bight is no knot at all when it is closed whole; cut at the
//     bight it is.
//
// The first closing arc passes in front of the knot, the second in front of the
// first.
func (sh *Shape) Closures() []Closure {
	names, _ := sh.divided()
	return closures(sh, append(sh.plans(), partPlans(len(sh.Ropes), sh.outline(), names)...))
}

func (sh *Shape) plans() []plan { return plans(len(sh.Ropes), sh.outline()) }

func (sh *Shape) outline() outline {
	if len(sh.Objects) == 0 {
		return none
	}
	switch o := sh.Objects[0]; {
	case o.form() == gap:
		return none
	case o.form() == round || o.Kind == Cleat:
		return ring
	}
	return bar
}

func closures(k strands, all []plan) []Closure {
	out := make([]Closure, len(all))
	for i, p := range all {
		out[i] = closed(k, p).closure(nil)
		out[i].Name = p.name
	}
	return out
}

// strands is a knot whose open ends can be closed.
type strands interface {
	// strand gives a rope or the axis of a bar as a polygon.
	strand(strandRef) []corner
	// farAway gives an object closed on itself without passing near the rope.
	farAway(strandRef) []corner
	// over tells whether the segment beginning at p passes over the one beginning at
	// q where they meet, at the shares t and u of their lengths, and which declared
	// crossing that is, −1 if none.
	over(p, q corner, t, u float64) (over bool, declared int)
}

// strandRef is a rope or an object's axis, run forward or back.
type strandRef struct {
	object  bool
	index   int
	reverse bool
	share   share
	cut     int // which of the places where it is divided
}

// sliver is what is cut out where a rope is divided, so that its two ends are
// apart.
const sliver = 0.05

// share of a rope to close by itself.
type share int

const (
	whole share = iota
	first       // as far as a place where it is divided
	rest        // from there on
)

// plan says which strands follow each other round each component; arcs close
// the gaps between them.
type plan struct {
	name       string
	components [][]strandRef
	behind     bool
}

// outline is how an object is closed.
type outline int

const (
	none outline = iota
	ring         // closed already, or closed far away only
	bar          // its ends can be joined to the rope's
)

func (s strandRef) back() strandRef { s.reverse = !s.reverse; return s }

// join gives the plans of two strands: N, X and D.
func join(prefix string, a, b strandRef) []plan {
	return []plan{
		{name: prefix + "N", components: [][]strandRef{{a, b.back()}}},
		{name: prefix + "X", components: [][]strandRef{{a, b}}},
		{name: prefix + "D", components: [][]strandRef{{a}, {b}}},
	}
}

// plans closes the knot as a whole.
func plans(ropes int, object outline) []plan {
	a, o := strandRef{}, strandRef{object: true}
	switch {
	case ropes == 2:
		return join("", a, strandRef{index: 1})
	case object != none:
		p := []plan{{name: "L", components: [][]strandRef{{a}, {o}}}}
		if object == bar {
			// The axis runs from bottom (right) to top (left) when not reversed.
			p = append(p, plan{name: "K1", components: [][]strandRef{{a, o}}}, plan{name: "K2", components: [][]strandRef{{a, o.back()}}})
		}
		return p
	}
	return []plan{{name: "front", components: [][]strandRef{{a}}}, {name: "behind", components: [][]strandRef{{a}}, behind: true}}
}

// partPlans closes parts of the knot by themselves; parts names the first parts of
// a rope divided at so many places.
func partPlans(ropes int, object outline, parts []string) []plan {
	one := func(name string, s strandRef) plan { return plan{name: name, components: [][]strandRef{{s}}} }
	if ropes == 2 {
		return []plan{one("1", strandRef{}), one("2", strandRef{index: 1})}
	}
	var out []plan
	if object != none {
		out = append(out, one("alone", strandRef{}))
	}
	for i, part := range parts {
		prefix := "cut "
		if i > 0 {
			prefix = fmt.Sprintf("cut %d ", i+1)
		}
		a, b := strandRef{share: first, cut: i}, strandRef{share: rest, cut: i}
		cut := join(prefix, a, b)
		if object != none {
			cut[2].components = append(cut[2].components, []strandRef{{object: true}})
		}
		out = append(append(out, one(part, a)), cut...)
	}
	return out
}

// corner is a vertex of a diagram; the segment that begins there belongs to the
// strand named and, on a rope, to the arc length given.
type corner struct {
	at    Point
	level int // 0 the knot itself; ±1, ±2 … closing arcs in front or behind
	ref   strandRef
	s     float64
	// z and rise are used by models in space: how near the corner is to the viewer,
	// and how much nearer the next.
	z, rise float64
}

// diagram is a set of closed polygons with a rule for over and under.
type diagram struct {
	strands
	comps [][]corner
}

// closed closes the ends of a knot as planned.
func closed(k strands, p plan) diagram {
	d := diagram{strands: k}
	arc := 0
	for _, refs := range p.components {
		var poly []corner
		for i, ref := range refs {
			if len(refs) == 1 && ref.object {
				poly = append(poly, k.farAway(ref)...)
				continue
			}
			poly = append(poly, k.strand(ref)...)
			arc++
			level := arc
			if p.behind {
				level = -arc
			}
			next := k.strand(refs[(i+1)%len(refs)])[0].at
			last := poly[len(poly)-1].at
			// A bent arc, so that it meets no strand end on; being in front of
			// everything (or behind), its course does not matter.
			mid := lerp(last, next, 0.5).add(Point{0.0173, 0.0291}.times(float64(arc)))
			poly[len(poly)-1].level = level
			poly = append(poly, corner{at: mid, level: level})
		}
		d.comps = append(d.comps, poly)
	}
	return d
}

// strand gives a rope as a polygon whose corners avoid the crossing points, or
// the axis of a bar.
func (sh *Shape) strand(ref strandRef) []corner {
	var out []corner
	if ref.object {
		o := sh.Objects[ref.index]
		far := o.Len/2 + 0.35
		a, b := o.At.add(Point{0.011, far}), o.At.add(Point{-0.013, -far})
		if o.form() == level {
			a, b = o.At.add(Point{far, 0.011}), o.At.add(Point{-far, -0.013})
		}
		out = []corner{{at: a, ref: ref}, {at: b, ref: ref}}
	} else {
		c := sh.curves[ref.index]
		from, upto := 0.0, c.length()
		if ref.share != whole {
			_, at := sh.divided()
			if ref.share == first {
				upto = at[ref.cut] - sliver
			} else {
				from = at[ref.cut] + sliver
			}
		}
		out = append(out, corner{at: c.at(from), ref: ref, s: from})
		for k := range c.pt[1:] {
			if s := (c.s[k] + c.s[k+1]) / 2; s > from && s < upto {
				out = append(out, corner{at: c.at(s), ref: ref, s: s})
			}
		}
		out = append(out, corner{at: c.at(upto), ref: ref, s: upto})
	}
	if ref.reverse {
		slices.Reverse(out)
		// A segment takes its data from the corner it begins at; run backward, from
		// the corner it used to end at, which differs by less than one sample.
	}
	return out
}

// divided names the first parts of the first rope and says how far along it they
// end.
func (sh *Shape) divided() (names []string, at []float64) {
	c := sh.curves[0]
	switch {
	case sh.Doubled:
		names, at = append(names, "half"), append(at, c.length()/2)
	case sh.Begun > 0:
		names, at = append(names, "begun"), append(at, c.nodeS(sh.Ropes[0].mark(sh.Begun)))
	}
	for i, share := range sh.Parts {
		name := "part"
		if i > 0 {
			name = fmt.Sprintf("part %d", i+1)
		}
		names, at = append(names, name), append(at, share*c.length())
	}
	return names, at
}

// farAway closes an object on itself without passing near the rope: a ring is
// closed already, a bar goes round outside the whole drawing.
func (sh *Shape) farAway(ref strandRef) []corner {
	o := sh.Objects[ref.index]
	if o.form() == round {
		var out []corner
		const n = 97
		for k := range n {
			a := 2 * math.Pi * (float64(k) + 0.37) / n
			out = append(out, corner{at: o.At.add(Point{o.R * math.Cos(a), o.R * math.Sin(a)}), ref: ref})
		}
		return out
	}
	big := 0.0
	for _, c := range sh.curves {
		for _, p := range c.pt {
			big = math.Max(big, p.sub(o.At).len())
		}
	}
	big += 5
	axis := sh.strand(ref)
	dir := axis[1].at.sub(axis[0].at).unit()
	side := Point{-dir.Y, dir.X}
	a, b := axis[0].at.sub(dir.times(big)), axis[1].at.add(dir.times(big))
	return []corner{{at: a, ref: ref}, {at: b, ref: ref}, {at: b.add(side.times(3 * big)), ref: ref}, {at: a.add(side.times(3 * big)), ref: ref}}
}

// meeting is a crossing of a closed diagram: where its two strands p and q run,
// which of them is over, and which declared crossing of the drawing it is, −1 for
// those made by objects and closing arcs.
type meeting struct {
	p, q     passage
	pOver    bool
	declared int
}

// passage of a component through a crossing.
type passage struct {
	comp  int
	along float64 // segment number plus fraction
	dir   Point
}

// hit is a passage with its side known.
type hit struct {
	passage
	x    int
	over bool
}

// meetings finds all crossings of the diagram.
func (d diagram) meetings() []meeting {
	var out []meeting
	for a := range d.comps {
		for b := a; b < len(d.comps); b++ {
			pa, pb := d.comps[a], d.comps[b]
			for i := range pa {
				from := 0
				if a == b {
					from = i + 2
				}
				for j := from; j < len(pb); j++ {
					if a == b && i == 0 && j == len(pb)-1 {
						continue
					}
					p0, p1, q0, q1 := pa[i], pa[(i+1)%len(pa)], pb[j], pb[(j+1)%len(pb)]
					t, u, ok := meet(p0.at, p1.at, q0.at, q1.at)
					if !ok {
						continue
					}
					over, declared := p0.level > q0.level, -1
					if p0.level == q0.level {
						over, declared = d.over(p0, q0, t, u)
					}
					out = append(out, meeting{
						passage{a, float64(i) + t, p1.at.sub(p0.at)},
						passage{b, float64(j) + u, q1.at.sub(q0.at)}, over, declared})
				}
			}
		}
	}
	return out
}

// closure computes the invariants of the diagram; flipped, by number of declared
// crossing, turns crossings over first.
func (d diagram) closure(flipped []bool) Closure {
	return closureOf(d.meetings(), len(d.comps), flipped)
}

func closureOf(meetings []meeting, components int, flipped []bool) Closure {
	hits := make([]hit, 0, 2*len(meetings))
	for n, m := range meetings {
		over := m.pOver != (m.declared >= 0 && m.declared < len(flipped) && flipped[m.declared])
		hits = append(hits, hit{m.p, n, over}, hit{m.q, n, !over})
	}
	return fromHits(hits, len(meetings), components)
}

// over goes by what the source declares where the two meet.
func (sh *Shape) over(p, q corner, _, _ float64) (over bool, declared int) {
	switch {
	case p.ref.object && q.ref.object:
		return true, -1
	case p.ref.object:
		return !sh.frontAt(spot{q.ref.index, q.s}, p.ref.index), -1
	case q.ref.object:
		return sh.frontAt(spot{p.ref.index, p.s}, q.ref.index), -1
	}
	// The crossing found at load that lies nearest.
	best := math.Inf(1)
	for i, x := range sh.crossings {
		a, b := spot{p.ref.index, p.s}, spot{q.ref.index, q.s}
		near := func(u, v spot) float64 {
			if u.rope != v.rope {
				return math.Inf(1)
			}
			return math.Abs(u.s - v.s)
		}
		number := i
		if x.hidden {
			number = -1
		}
		if m := near(a, x.over) + near(b, x.under); m < best {
			best, over, declared = m, true, number
		}
		if m := near(b, x.over) + near(a, x.under); m < best {
			best, over, declared = m, false, number
		}
	}
	return over, declared
}

// fromHits numbers the edges and writes the planar diagram code.
func fromHits(hits []hit, n, components int) Closure {
	sort.SliceStable(hits, func(i, j int) bool {
		if hits[i].comp != hits[j].comp {
			return hits[i].comp < hits[j].comp
		}
		return hits[i].along < hits[j].along
	})
	type ends struct {
		comp, in, out int
		dir           Point
	}
	over, under := make([]ends, n), make([]ends, n)
	edge, loose := 0, 0
	for c := range components {
		var mine []hit
		for _, h := range hits {
			if h.comp == c {
				mine = append(mine, h)
			}
		}
		if len(mine) == 0 {
			loose++ // a circle that meets nothing
		}
		for k, h := range mine {
			e := ends{c, edge + 1 + k, edge + 1 + (k+1)%len(mine), Point{h.dir.X, -h.dir.Y}}
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
		if o.dir.cross(u.dir) > 0 {
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
	alex := code.alexander()
	out.Alexander = alex.text("t", 2)
	out.Determinant = alex.absAtMinusOne()
	out.Jones = code.jones().text("t", 1)
	return out
}
