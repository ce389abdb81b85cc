// Package trace names a tied knot from a line traced over it: where the line crosses itself,
// which strand lies over, and what it is tied round.
//
// Two things are compared with the drawings of the catalogue. First the diagram as it is
// traced: its crossings in the order in which the ropes meet them, from the standing part on,
// each with the side on which the other strand comes. Two tracings of one form have the same,
// however they are bent, turned or seen from behind; from it also follows which crossing would
// have to be turned over to make the form. Then, where the diagram is another, slack is taken out
// of it: kinks with nothing in them, strands that lie over others there and back. Then the
// invariants of every closure of its ends (package tangle), in front and behind: the same knot laid
// otherwise has the same. Forms whose closures are all plain rings, linked once at most, are
// told by their diagram only, since everything that falls open has those.
package trace

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/shape/curve"
	"oarweed/core/shape/tangle"
)

// Trace is a knot as somebody traced it. X runs to the right and y down.
type Trace struct {
	Ropes []Rope `json:"ropes" nullable:"false"`
	// Over says for each crossing which strand is over: rope and segment of the upper one,
	// then rope and segment of the lower, all counted from 0; segment i runs from point i to
	// the next.
	Over []Entry `json:"over" nullable:"false"`
	// Object is the rope that stands for the ring, post or rail that the knot is tied round.
	Object *int `json:"object,omitempty" minimum:"0"`
}

// Rope is a line from its standing part to its end; the object may be closed.
type Rope struct {
	Points []Point `json:"points" nullable:"false"`
	Closed bool    `json:"closed,omitempty"`
}

// Point is x and y, Entry the rope and segment of the upper strand and those of the lower one.
type (
	Point [2]float64
	Entry [4]int
)

func (p *Point) UnmarshalJSON(text []byte) error {
	return exactly(text, p[:], "points", "a point holds two numbers, x and y")
}

func (e *Entry) UnmarshalJSON(text []byte) error {
	return exactly(text, e[:], "over", "an entry holds four whole numbers: rope, segment, rope, segment")
}

// exactly reads a list as long as it must be: encoding/json drops what is too many, and fills up.
func exactly[T any](text []byte, into []T, field, what string) error {
	var list []T
	if err := json.Unmarshal(text, &list); err != nil || len(list) != len(into) {
		return problem.New(field, what+", not "+string(text), "correct it")
	}
	copy(into, list)
	return nil
}

const (
	mostPoints    = 4000
	mostCrossings = 63 // one bit for each in a word
)

// Meeting is a place where two strands cross: rope and segment of each, the one that comes by
// first before the other; an object comes last.
type Meeting struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	A [2]int  `json:"a" nullable:"false"`
	B [2]int  `json:"b" nullable:"false"`
	// Over tells which strand lies over, "a" or "b"; empty where it is not said yet.
	Over string `json:"over,omitempty" enum:"a,b"`
}

// Tied is a tracing that can be named.
type Tied struct {
	ropes  [][]curve.Point // scaled to a size of 10, the object last
	loops  bool            // the object is closed
	open   int             // how many ropes are no object
	number []int           // of each rope, as it was given
	meets  []meeting
	at     map[[4]int]int // meeting by segments, both ways round
	// over, by meeting: strand a lies over.
	over []bool
	// shown are the meetings as they are told.
	shown []Meeting
}

// meeting of strand a, which comes by first, with b: places along them, segment and fraction.
type meeting struct {
	at     curve.Point
	a, b   place
	across float64 // a's direction × b's
}

type place struct {
	rope  int
	along float64
}

func (p place) segment() int { return int(p.along) }

func (p place) before(q place) bool { return p.rope < q.rope || p.rope == q.rope && p.along < q.along }

// Meetings lists the crossings of a tracing and what is said of them; the error tells a tracing
// that has none to be told. It may be half marked.
func (t Trace) Meetings() ([]Meeting, error) {
	r, err := t.read(false)
	if err != nil {
		return nil, err
	}
	return r.shown, nil
}

// Read checks a tracing: every crossing marked, none where three strands meet.
func (t Trace) Read() (*Tied, error) { return t.read(true) }

func (t Trace) read(whole bool) (*Tied, error) {
	r, err := t.laid()
	if err != nil {
		return nil, err
	}
	var l problem.List
	r.cross(&l)
	if err := l.Err(); err != nil {
		return nil, err
	}
	said := t.said(r, &l)
	r.over = make([]bool, len(r.meets))
	for i, m := range r.meets {
		shown := Meeting{A: [2]int{r.number[m.a.rope], m.a.segment()}, B: [2]int{r.number[m.b.rope], m.b.segment()}}
		shown.X, shown.Y = t.where(shown.A, m.a.along-math.Floor(m.a.along))
		if side := said[i]; side != 0 {
			r.over[i] = side > 0
			shown.Over = map[bool]string{true: "a", false: "b"}[side > 0]
		} else if whole {
			l.Add("over", fmt.Sprintf("the crossing at %.4g, %.4g of rope %d, segment %d, and rope %d, segment %d, is left out", shown.X, shown.Y, shown.A[0], shown.A[1], shown.B[0], shown.B[1]),
				fmt.Sprintf("add [%d,%d,%d,%d] if the first lies over, [%d,%d,%d,%d] if the second does", shown.A[0], shown.A[1], shown.B[0], shown.B[1], shown.B[0], shown.B[1], shown.A[0], shown.A[1]))
		}
		r.shown = append(r.shown, shown)
	}
	return r, l.Err()
}

// where is the place on the tracing as it was given.
func (t Trace) where(strand [2]int, share float64) (x, y float64) {
	p := t.Ropes[strand[0]].Points
	a, b := p[strand[1]], p[(strand[1]+1)%len(p)]
	return a[0] + share*(b[0]-a[0]), a[1] + share*(b[1]-a[1])
}

// laid checks the ropes and scales them.
func (t Trace) laid() (*Tied, error) {
	var l problem.List
	r := &Tied{at: map[[4]int]int{}}
	points := 0
	lo, hi := curve.Pt(math.Inf(1), math.Inf(1)), curve.Pt(math.Inf(-1), math.Inf(-1))
	if t.Object != nil && (*t.Object < 0 || *t.Object >= len(t.Ropes)) {
		l.Add("object", fmt.Sprintf("there is no rope %d", *t.Object), "give the number of a rope, from 0, or leave it out")
	}
	for i, rope := range t.Ropes {
		at := fmt.Sprintf("ropes[%d]", i)
		object := t.Object != nil && *t.Object == i
		if least := 2; len(rope.Points) < least || rope.Closed && len(rope.Points) < 3 {
			l.Add(at+".points", "is too short to be a line", "give two points or more, three for a ring")
		}
		if rope.Closed && !object {
			l.Add(at+".closed", "a rope has two ends; only what it is tied round can be closed", `leave it out, or name this rope as "object"`)
		}
		points += len(rope.Points)
		for k, p := range rope.Points {
			if bad := math.IsNaN(p[0]+p[1]) || math.IsInf(p[0]+p[1], 0) || math.Abs(p[0])+math.Abs(p[1]) > 1e9; bad {
				l.Add(fmt.Sprintf("%s.points[%d]", at, k), "is no place on a page", "give two numbers below a milliard")
				continue
			}
			if k > 0 && p == rope.Points[k-1] || rope.Closed && k == len(rope.Points)-1 && p == rope.Points[0] {
				l.Add(fmt.Sprintf("%s.points[%d]", at, k), "is the point before it again", "drop one; a closed line comes back by itself")
			}
			lo = curve.Pt(math.Min(lo.X, p[0]), math.Min(lo.Y, p[1]))
			hi = curve.Pt(math.Max(hi.X, p[0]), math.Max(hi.Y, p[1]))
		}
	}
	r.open = len(t.Ropes)
	if t.Object != nil {
		r.open--
	}
	if r.open < 1 || r.open > 2 {
		l.Add("ropes", fmt.Sprintf("holds %d ropes besides what they are tied round", max(r.open, 0)), "trace one rope or two")
	}
	if points > mostPoints {
		l.Add("ropes", fmt.Sprintf("has %d points", points), fmt.Sprintf("use %d at the most", mostPoints))
	}
	if err := l.Err(); err != nil {
		return nil, err
	}
	size := 10 / math.Max(hi.Sub(lo).Len(), 1e-12)
	add := func(i int) {
		pts := make([]curve.Point, len(t.Ropes[i].Points))
		for k, p := range t.Ropes[i].Points {
			// Points on round numbers lie on one another's lines; a hair to the side they do not.
			s1, s2 := math.Sincos(float64(97*i+k) * 2.399963)
			pts[k] = curve.Pt(p[0], p[1]).Sub(lo).Times(size).Add(curve.Pt(s1, s2).Times(hair))
		}
		r.ropes, r.number = append(r.ropes, pts), append(r.number, i)
	}
	for i := range t.Ropes {
		if t.Object == nil || *t.Object != i {
			add(i)
		}
	}
	if t.Object != nil {
		add(*t.Object)
		r.loops = t.Ropes[*t.Object].Closed
	}
	return r, nil
}

const (
	hair = 1e-8 // of a tracing 10 across
	// together is how near two crossings are one point.
	together = 2e-6
)

// segments of rope r: how many, and the next point after each.
func (r *Tied) segments(rope int) int {
	if r.object(rope) && r.loops {
		return len(r.ropes[rope])
	}
	return len(r.ropes[rope]) - 1
}

func (r *Tied) object(rope int) bool { return rope >= r.open }

func (r *Tied) next(rope, k int) curve.Point { return r.ropes[rope][(k+1)%len(r.ropes[rope])] }

// cross finds where strands meet.
func (r *Tied) cross(l *problem.List) {
	for a := range r.ropes {
		for b := a; b < len(r.ropes); b++ {
			for i := range r.segments(a) {
				p0, p1 := r.ropes[a][i], r.next(a, i)
				from := 0
				if a == b {
					from = i + 2
				}
				for j := from; j < r.segments(b); j++ {
					if a == b && r.loops && r.object(a) && i == 0 && j == r.segments(b)-1 {
						continue
					}
					q0, q1 := r.ropes[b][j], r.next(b, j)
					if math.Max(q0.X, q1.X) < math.Min(p0.X, p1.X) || math.Min(q0.X, q1.X) > math.Max(p0.X, p1.X) {
						continue
					}
					t, u, ok := curve.Meet(p0, p1, q0, q1)
					if !ok {
						continue
					}
					m := meeting{at: curve.Lerp(p0, p1, t), a: place{a, float64(i) + t}, b: place{b, float64(j) + u}, across: p1.Sub(p0).Cross(q1.Sub(q0))}
					if r.object(a) {
						l.Add(fmt.Sprintf("ropes[%d]", r.number[a]), "what the knot is tied round crosses itself", "trace it as a plain ring, or as a bar with two ends")
						return
					}
					r.at[[4]int{a, i, b, j}], r.at[[4]int{b, j, a, i}] = len(r.meets), len(r.meets)
					r.meets = append(r.meets, m)
				}
			}
		}
	}
	if len(r.meets) > mostCrossings {
		l.Add("ropes", fmt.Sprintf("cross in %d places", len(r.meets)), fmt.Sprintf("trace the knot alone, with %d crossings at the most", mostCrossings))
		return
	}
	for i, m := range r.meets {
		for _, n := range r.meets[:i] {
			if m.at.Sub(n.at).Len() < together {
				l.Add("ropes", fmt.Sprintf("three strands go through one point: rope %d, segment %d; rope %d, segment %d; rope %d, segment %d",
					r.number[n.a.rope], n.a.segment(), r.number[n.b.rope], n.b.segment(), r.number[m.b.rope], m.b.segment()), "lead one of them past the crossing")
				return
			}
		}
	}
}

// said reads which strand lies over: for each meeting 1 for a, −1 for b, 0 for nothing.
func (t Trace) said(r *Tied, l *problem.List) []int {
	out := make([]int, len(r.meets))
	index := map[int]int{}
	for k, i := range r.number {
		index[i] = k
	}
	for n, e := range t.Over {
		at := fmt.Sprintf("over[%d]", n)
		ok := true
		for k := 0; k < 4; k += 2 {
			rope, segment := e[k], e[k+1]
			if rope < 0 || rope >= len(t.Ropes) {
				l.Add(at, fmt.Sprintf("there is no rope %d", rope), fmt.Sprintf("ropes are numbered 0 to %d", len(t.Ropes)-1))
				ok = false
			} else if segment < 0 || segment >= r.segments(index[rope]) {
				l.Add(at, fmt.Sprintf("rope %d has no segment %d", rope, segment), fmt.Sprintf("its segments are numbered 0 to %d", r.segments(index[rope])-1))
				ok = false
			}
		}
		if !ok {
			continue
		}
		m, side := r.meant([2]int{index[e[0]], e[1]}, [2]int{index[e[2]], e[3]})
		switch {
		case m < 0:
			l.Add(at, fmt.Sprintf("rope %d, segment %d, and rope %d, segment %d, do not cross", e[0], e[1], e[2], e[3]), "name the two segments that meet at the crossing, the upper one first")
		case out[m] == -side:
			l.Add(at, fmt.Sprintf("says the opposite of an entry before it about the crossing of rope %d, segment %d, and rope %d, segment %d", e[0], e[1], e[2], e[3]), "keep the one that is true")
		default:
			out[m] = side
		}
	}
	return out
}

// meant is the meeting of two segments, and 1 if the first of them is its strand a. A crossing
// that lies on a point belongs to either segment there.
func (r *Tied) meant(p, q [2]int) (int, int) {
	side := func(m int) int {
		a := r.meets[m].a
		if a.rope == p[0] && (r.meets[m].b.rope != p[0] || math.Abs(a.along-float64(p[1])-0.5) < math.Abs(a.along-float64(q[1])-0.5)) {
			return 1
		}
		return -1
	}
	if m, ok := r.at[[4]int{p[0], p[1], q[0], q[1]}]; ok {
		return m, side(m)
	}
	for m, x := range r.meets {
		near := func(s place, want [2]int) bool {
			d := s.along - float64(want[1])
			return s.rope == want[0] && (d > -1e-5 && d < 1+1e-5)
		}
		if near(x.a, p) && near(x.b, q) || near(x.a, q) && near(x.b, p) {
			return m, side(m)
		}
	}
	return -1, 0
}

// Strand gives a rope, or the object, as a polygon.
func (r *Tied) Strand(ref tangle.Ref) []tangle.Vertex {
	rope := ref.Index
	if ref.Object {
		rope = r.open
	}
	out := make([]tangle.Vertex, len(r.ropes[rope]))
	for k, p := range r.ropes[rope] {
		out[k] = tangle.Vertex{At: p, Ref: ref, S: float64(k)}
	}
	if ref.Reverse {
		slices.Reverse(out)
	}
	return out
}

// beyond is the level of what closes a bar far away: behind everything.
const beyond = -1000

// FarAway closes the object on itself: a ring is closed already, a bar goes on past its ends
// and round outside.
func (r *Tied) FarAway(ref tangle.Ref) []tangle.Vertex {
	out := r.Strand(ref)
	if r.loops {
		return out
	}
	a, b := out[0].At, out[len(out)-1].At
	dir := b.Sub(a).Unit().Times(100)
	side := curve.Pt(-dir.Y, dir.X).Times(3)
	out[len(out)-1].Level = beyond
	for _, p := range []curve.Point{b.Add(dir), b.Add(dir).Add(side), a.Sub(dir).Add(side), a.Sub(dir)} {
		out = append(out, tangle.Vertex{At: p, Ref: ref, Level: beyond})
	}
	return out
}

// Over goes by what was marked where the two meet.
func (r *Tied) Over(p, q tangle.Vertex, _, _ float64) (over bool, declared int) {
	segment := func(v tangle.Vertex) (int, int) {
		rope, k := v.Ref.Index, int(v.S)
		if v.Ref.Object {
			rope = r.open
		}
		if v.Ref.Reverse {
			k--
		}
		return rope, k
	}
	a, i := segment(p)
	b, j := segment(q)
	m, ok := r.at[[4]int{a, i, b, j}]
	if !ok {
		return false, -1
	}
	x := r.meets[m]
	first := x.a.rope == a && x.a.segment() == i
	return r.over[m] == first, m
}

// outline is how the object is closed.
func (r *Tied) outline() tangle.Outline {
	switch {
	case r.open == len(r.ropes):
		return tangle.NoObject
	case r.loops:
		return tangle.ClosedRing
	}
	return tangle.OpenBar
}

// entry is the meeting as it stands, for [Trace.Over].
func (m Meeting) entry() Entry {
	if m.Over == "b" {
		return Entry{m.B[0], m.B[1], m.A[0], m.A[1]}
	}
	return Entry{m.A[0], m.A[1], m.B[0], m.B[1]}
}

// code writes the diagram, seen from in front or behind, with its ropes in an order and its
// object run either way, as a text that is the same for every tracing of the form; bits say of
// each crossing, in the order in which the text numbers them, whether the strand that comes by
// first is over, and order which meeting it is.
func (r *Tied) code(order []int, objectBack, behind bool) (text string, bits []bool, numbered []int) {
	visits := r.stops()
	var b strings.Builder
	id := make([]int, len(r.meets))
	for i := range id {
		id[i] = -1
	}
	for _, rope := range order {
		b.WriteByte('|')
		for _, v := range visits[rope] {
			if id[v.m] >= 0 {
				fmt.Fprintf(&b, "%d ", id[v.m])
				continue
			}
			id[v.m] = len(numbered)
			numbered, bits = append(numbered, v.m), append(bits, v.over)
			x := r.meets[v.m]
			left := x.across < 0
			if !v.first {
				left = !left
			}
			object := r.object(x.b.rope)
			if left != behind != (object && objectBack) {
				fmt.Fprintf(&b, "%d< ", id[v.m])
			} else {
				fmt.Fprintf(&b, "%d> ", id[v.m])
			}
		}
	}
	if r.open < len(r.ropes) {
		b.WriteByte('o')
		round := visits[r.open]
		if objectBack {
			slices.Reverse(round)
		}
		least := 0 // begin where the ropes first meet it: where a bar begins is nobody's choice
		for k, v := range round {
			if id[v.m] < id[round[least].m] {
				least = k
			}
		}
		for k := range round {
			fmt.Fprintf(&b, "%d ", id[round[(least+k)%len(round)].m])
		}
	}
	return b.String(), bits, numbered
}
