package snug

import (
	"math"

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
	// Knotted is the same from where it first touches a rope to where it last does, without
	// an eye: the line in a loop that is not round the thing.
	Knotted float64 `json:"knotted_d"`
	// Shortened is how much nearer its ends are than it is long.
	Shortened float64 `json:"shortened_d"`
}

// Bulk of a knot in three dimensions: along its pull, across it the widest way, and square to
// both.
type Bulk struct {
	Across float64 `json:"across"`
	Along  float64 `json:"along"`
	Flat   float64 `json:"flat"`
}

// touching is how near tubes must be to touch, as a share of their distance.
const touching = 1.03

// Measure a knot that is drawn up.
func Measure(strands []Strand) Metrics {
	m := Metrics{Ropes: []RopeMetrics{}, ContactMin: Thickness(strands)}
	s := &solver{strands: strands}
	touched, knotted := s.touches()
	consumed, inside := s.span(touched), s.span(knotted)
	for k, st := range strands {
		if st.Fixed {
			continue
		}
		r := RopeMetrics{Shortened: st.length() - r3.Norm(r3.Sub(st.Nodes[0], st.Nodes[len(st.Nodes)-1]))}
		r.Consumed, r.Knotted = consumed[k], inside[k]
		m.Ropes = append(m.Ropes, r)
	}
	m.Bulk = s.bulk(knotted)
	return m
}

// touches are the segments that touch another strand or turn, and those that touch a rope.
func (s *solver) touches() (touched, knotted []bool) {
	s.lay()
	s.list()
	total := s.arcs()
	touched, knotted = make([]bool, len(s.seg)), make([]bool, len(s.seg))
	touch := func(i int32, rope bool) {
		touched[i] = true
		knotted[i] = knotted[i] || rope
	}
	var m meeting
	for _, pr := range s.pairs {
		a, b := s.seg[pr[0]], s.seg[pr[1]]
		if s.strands[a.strand].Peg || s.strands[b.strand].Peg {
			continue
		}
		if !s.meet(pr, touching, total, &m) {
			continue
		}
		ropes := !s.strands[a.strand].Fixed && !s.strands[b.strand].Fixed
		touch(pr[0], ropes)
		touch(pr[1], ropes)
	}
	return touched, knotted
}

// knotted are the nodes of each rope that lie near a touch; all of a rope that touches
// nothing. The free stretch of an eye is left out, and the thing at its far side.
func knotted(strands []Strand) [][]r3.Vec {
	s := &solver{strands: strands}
	touched, inside := s.touches()
	any := make([]bool, len(strands))
	for i, g := range s.seg {
		any[g.strand] = any[g.strand] || touched[i]
	}
	for i, g := range s.seg {
		touched[i] = touched[i] && s.near(g, inside, farThing)
	}
	out := make([][]r3.Vec, len(strands))
	for _, g := range s.seg {
		if !any[g.strand] || s.near(g, touched, around) {
			out[g.strand] = append(out[g.strand], s.x[g.a], s.x[g.b])
		}
	}
	return out
}

// near reports whether a chosen segment lies within so much rope of another; true where none
// of its strand is chosen.
func (s *solver) near(g segment, chosen []bool, within float64) bool {
	none := true
	for k, h := range s.seg {
		if chosen[k] && h.strand == g.strand {
			if none = false; math.Abs(h.s-g.s) <= within {
				return true
			}
		}
	}
	return none
}

// farThing is how far from where it touches a rope the thing at the far side of an eye is, and
// is not shown.
const farThing = 10

// around is how much of a lead is shown, in diameters.
const around = 3.5

// span is the rope of each strand from the first to the last of the chosen segments, without
// the longest stretch between two of them if it is an eye, which is no part of the knot.
// Shorter than openEye it is none.
func (s *solver) span(chosen []bool) []float64 {
	out, eye := make([]float64, len(s.strands)), make([]float64, len(s.strands))
	first, since := make([]float64, len(s.strands)), make([]float64, len(s.strands))
	begun := make([]bool, len(s.strands))
	for i, g := range s.seg {
		k := g.strand
		switch {
		case !chosen[i]:
			continue
		case !begun[k]:
			begun[k], first[k] = true, g.s
		case g.s-since[k] > openEye:
			eye[k] = max(eye[k], g.s-since[k])
		}
		since[k] = g.s
		out[k] = g.s - first[k] - eye[k]
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
	wide := func(t float64) float64 {
		sin, cos := math.Sincos(t)
		w := r3.Add(r3.Scale(cos, u), r3.Scale(sin, v))
		a, b := math.Inf(1), math.Inf(-1)
		for _, p := range pts {
			t := r3.Dot(p, w)
			a, b = math.Min(a, t), math.Max(b, t)
		}
		return b - a
	}
	across, at := 0.0, 0.0
	for k := range 36 {
		if w := wide(math.Pi * float64(k) / 36); w > across {
			across, at = w, math.Pi*float64(k)/36
		}
	}
	return Bulk{Across: across + st.D, Along: high - low + st.D, Flat: wide(at+math.Pi/2) + st.D}
}
