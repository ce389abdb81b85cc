package snug

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// Metrics of a knot that is drawn up, in diameters of its first rope.
type Metrics struct {
	Ropes []RopeMetrics `json:"ropes" nullable:"false"`
	// Bulk is how thick and how long the knot is, tubes included.
	Bulk Bulk `json:"bulk_d"`
	// ContactMin is the least distance of two axes ÷ what it should be: 1 where tubes just
	// touch.
	ContactMin float64 `json:"contact_min_d"`
}

// RopeMetrics of one rope.
type RopeMetrics struct {
	// Consumed is the rope from where it first touches the knot to where it last does.
	Consumed float64 `json:"consumed_d"`
	// Shortened is how much nearer its ends are than it is long.
	Shortened float64 `json:"shortened_d"`
}

// Bulk of a knot along its pull and across it, the larger way.
type Bulk struct {
	Across float64 `json:"across"`
	Along  float64 `json:"along"`
}

// touching is how near tubes must be to touch, as a share of their distance.
const touching = 1.03

// Measure a knot that is drawn up.
func Measure(strands []Strand) Metrics {
	m := Metrics{Ropes: []RopeMetrics{}, ContactMin: Thickness(strands)}
	s := &solver{strands: strands}
	touched, knotted, first, last := s.touches()
	eye := s.eyes(touched, first, last)
	for k, st := range strands {
		if st.Fixed {
			continue
		}
		r := RopeMetrics{Shortened: st.length() - r3.Norm(r3.Sub(st.Nodes[0], st.Nodes[len(st.Nodes)-1]))}
		if last[k] > first[k] {
			r.Consumed = last[k] - first[k] - eye[k]
		}
		m.Ropes = append(m.Ropes, r)
	}
	m.Bulk = s.bulk(knotted)
	return m
}

// touches are the segments that touch another, those that touch a rope, and where along each
// strand the first and the last of them lie; infinite where none does.
func (s *solver) touches() (touched, knotted []bool, first, last []float64) {
	s.lay()
	s.list()
	total := s.arcs()
	for range s.strands {
		first, last = append(first, math.Inf(1)), append(last, math.Inf(-1))
	}
	touched, knotted = make([]bool, len(s.seg)), make([]bool, len(s.seg))
	touch := func(i int32, rope bool) {
		g := s.seg[i]
		touched[i] = true
		knotted[i] = knotted[i] || rope
		first[g.strand] = math.Min(first[g.strand], g.s)
		last[g.strand] = math.Max(last[g.strand], g.s)
	}
	for _, pr := range s.pairs {
		a, b := s.seg[pr[0]], s.seg[pr[1]]
		if s.strands[a.strand].Peg || s.strands[b.strand].Peg {
			continue
		}
		u, v, d := closest(s.x[a.a], s.x[a.b], s.x[b.a], s.x[b.b])
		l := r3.Norm(d)
		if l > touching*s.apart(a, b) {
			continue
		}
		if s.beside(a, b, u, v, d, l, total) {
			continue
		}
		ropes := !s.strands[a.strand].Fixed && !s.strands[b.strand].Fixed
		touch(pr[0], ropes)
		touch(pr[1], ropes)
	}
	return touched, knotted, first, last
}

// knotted are the nodes of each rope that lie near a touch; all of a rope that touches
// nothing. The free stretch of an eye is left out.
func knotted(strands []Strand) [][]r3.Vec {
	s := &solver{strands: strands}
	touched, _, first, last := s.touches()
	out := make([][]r3.Vec, len(strands))
	for _, g := range s.seg {
		near := first[g.strand] > last[g.strand]
		for k, h := range s.seg {
			near = near || touched[k] && h.strand == g.strand && math.Abs(h.s-g.s) <= around
		}
		if near {
			out[g.strand] = append(out[g.strand], s.x[g.a], s.x[g.b])
		}
	}
	return out
}

// around is how much of a lead is shown, in diameters.
const around = 3.5

// eyes are the longest stretches of each rope between its touches that touch nothing: the
// eye of a loop, which is no part of the knot. Shorter than openEye it is none.
func (s *solver) eyes(touched []bool, first, last []float64) []float64 {
	out := make([]float64, len(s.strands))
	since := slices.Clone(first)
	for i, g := range s.seg {
		if !touched[i] || g.s > last[g.strand] {
			continue
		}
		if free := g.s - since[g.strand]; free > openEye && free > out[g.strand] {
			out[g.strand] = free
		}
		since[g.strand] = g.s
	}
	return out
}

// openEye is how long a stretch must touch nothing to be an eye, in diameters.
const openEye = 5

// bulk of what touches, along the pull and across it. The pull is from end to end of the
// first rope; where both lie on one side, as of a loop, from them into the knot.
func (s *solver) bulk(touched []bool) Bulk {
	st := s.strands[0]
	var pts []r3.Vec
	var middle r3.Vec
	for i, g := range s.seg {
		if !s.strands[g.strand].Fixed && touched[i] {
			pts = append(pts, s.x[g.a])
			middle = r3.Add(middle, s.x[g.a])
		}
	}
	if len(pts) == 0 {
		return Bulk{}
	}
	middle = r3.Scale(1/float64(len(pts)), middle)
	first, last := st.Nodes[0], st.Nodes[len(st.Nodes)-1]
	axis := r3.Sub(last, first)
	if r3.Dot(r3.Sub(first, middle), r3.Sub(last, middle)) > 0 {
		axis = r3.Sub(middle, mid(first, last))
	}
	axis = r3.Unit(axis)
	low, high := math.Inf(1), math.Inf(-1)
	for _, p := range pts {
		t := r3.Dot(p, axis)
		low, high = math.Min(low, t), math.Max(high, t)
	}
	// Across: the widest way, over directions square to the pull.
	u := r3.Cross(axis, r3.Vec{Z: 1})
	if r3.Norm(u) < 1e-6 {
		u = r3.Vec{Y: 1}
	}
	u = r3.Unit(u)
	v := r3.Cross(axis, u)
	across := 0.0
	for k := range 36 {
		sin, cos := math.Sincos(math.Pi * float64(k) / 36)
		w := r3.Add(r3.Scale(cos, u), r3.Scale(sin, v))
		a, b := math.Inf(1), math.Inf(-1)
		for _, p := range pts {
			t := r3.Dot(p, w)
			a, b = math.Min(a, t), math.Max(b, t)
		}
		across = math.Max(across, b-a)
	}
	return Bulk{Across: across + st.D, Along: high - low + st.D}
}
