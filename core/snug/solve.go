package snug

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// Strand is a rope, or a thing that ropes lie on.
type Strand struct {
	Nodes []r3.Vec
	// D is its diameter; the thinnest rope that moves has about 1.
	D float64
	// Closed: the last node is joined to the first.
	Closed bool
	// Fixed: it is an object, and does not move.
	Fixed bool
	// Peg: it keeps an eye open, and is no part of the knot.
	Peg bool
	// Aside: it is an object that no closure has, as the foot of a cleat.
	Aside bool
	// Held are nodes that do not move: ends that are pulled, the far side of an eye.
	Held []int
	// Led is where each held node is led while the rest is drawn up; nil: all stay.
	Led []r3.Vec
}

// Preset of a run.
type Preset struct {
	// Momentum kept from step to step, Tau the share by which segments are shortened at
	// first, Mu the friction between tubes.
	Momentum, Tau, Mu float64
	// Settled: a stage ends when the length has dropped by less than this share in each of
	// Patience blocks of 100 steps.
	Settled  float64
	Patience int
	// Push is where the whole of each rope is pushed by the hand, and how far in a step where
	// nothing holds it; by strand, or the same for all.
	Push []r3.Vec
	// Toward is how fast ropes are pushed toward the thing they are made on.
	Toward float64
	// Squeeze pushes what lies apart along it together, as far in a step.
	Squeeze r3.Vec
	// Watch is shown the strands after every block of steps; nil: nobody looks.
	Watch func([]Strand)
	// Blind: contact is switched off, to show that the guard sees it.
	Blind bool
}

// Presets for ideal shapes, and for knots as they are dressed.
var (
	Ideal = Preset{Momentum: 0.98, Tau: 0.02, Settled: 2e-5, Patience: 3}
	Dress = Preset{Momentum: 0.95, Tau: 0.01, Mu: 0.2, Settled: 4e-4, Patience: 1}
)

const (
	stages    = 6
	lastTau   = 3e-4
	block     = 100
	mostSteps = 40_000
	mostMove  = 0.15
	ledBy     = 0.01 // how far an end is led in a step
	skin      = 0.24
)

// What can go wrong.
var (
	ErrOverlap    = errors.New("tubes overlap at the start")
	ErrThrough    = errors.New("a tube passed through another")
	ErrDiverged   = errors.New("the shape flew apart")
	ErrNotSettled = errors.New("it did not settle")
)

type solver struct {
	Preset
	strands []Strand
	x, p    []r3.Vec
	inv     []float64 // 0: does not move
	led     map[int]r3.Vec
	first   []int // of each strand, its first node
	// seg[k] joins node a and node b of a strand.
	seg   []segment
	pairs [][2]int32
	since []r3.Vec // where the nodes were when pairs were listed
	// most is the largest move of a step, gap the least distance between axes ÷ what it
	// should be, found in it.
	most, gap float64
	worst     r3.Vec // where measure found it
}

type segment struct {
	a, b   int
	strand int
	// s is the arc length of its middle, in the strand, l its length when that was measured.
	s, l float64
}

// Tighten draws the strands up. The strands come back with their nodes moved; the error is
// one of the package's, with the step at which it happened.
func Tighten(strands []Strand, p Preset) ([]Strand, error) {
	s := &solver{Preset: p, strands: strands}
	s.lay()
	s.list()
	s.measure()
	if s.gap < 0.55 {
		return nil, fmt.Errorf("%w: axes at %.2f of their distance at %.1f, %.1f, %.1f", ErrOverlap, s.gap, s.worst.X, s.worst.Y, s.worst.Z)
	}
	steps := 0
	begin := s.length()
	for stage := range stages {
		tau := p.Tau * math.Pow(lastTau/p.Tau, float64(stage)/(stages-1))
		// The shape swings: a stage is over when no block has been shorter for a while.
		least, idle := s.length(), 0
		for idle < p.Patience || len(s.led) > 0 {
			for range block {
				if err := s.step(tau); err != nil {
					return nil, fmt.Errorf("%w at step %d", err, steps)
				}
				steps++
			}
			now := s.length()
			if p.Watch != nil {
				p.Watch(s.out())
			}
			if math.IsNaN(now) || now > 3*begin {
				return nil, fmt.Errorf("%w at step %d", ErrDiverged, steps)
			}
			if now < least*(1-p.Settled) {
				least, idle = now, 0
			} else {
				idle++
			}
			if steps > mostSteps {
				return nil, fmt.Errorf("%w in %d steps", ErrNotSettled, steps)
			}
		}
	}
	// At rest: hardly anything is shortened and nothing swings on, the tubes only part
	// where they still press.
	s.Momentum, s.Push, s.Toward, s.Squeeze = 0.3, nil, 0, r3.Vec{}
	for range 4 * block {
		if err := s.step(lastTau / 10); err != nil {
			return nil, fmt.Errorf("%w at rest", err)
		}
	}
	return s.out(), nil
}

// counts are the segments of each strand.
func (s *solver) counts() []int {
	out := make([]int, len(s.strands))
	for _, g := range s.seg {
		out[g.strand]++
	}
	return out
}

func (s *solver) lay() {
	s.led = map[int]r3.Vec{}
	for k, st := range s.strands {
		s.first = append(s.first, len(s.x))
		n := len(st.Nodes)
		for _, v := range st.Nodes {
			s.x = append(s.x, v)
			w := 1.0
			if st.Fixed {
				w = 0
			}
			s.inv = append(s.inv, w)
		}
		for h, i := range st.Held {
			s.inv[s.first[k]+i] = 0
			if st.Led != nil {
				s.led[s.first[k]+i] = st.Led[h]
			}
		}
		for i := range n {
			j := i + 1
			if j == n {
				if !st.Closed {
					break
				}
				j = 0
			}
			s.seg = append(s.seg, segment{a: s.first[k] + i, b: s.first[k] + j, strand: k})
		}
	}
	s.p = append([]r3.Vec(nil), s.x...)
}

// arcs measures where along its strand each segment lies.
func (s *solver) arcs() (total []float64) {
	total = make([]float64, len(s.strands))
	for i := range s.seg {
		g := &s.seg[i]
		l := norm(r3.Sub(s.x[g.b], s.x[g.a]))
		g.s, g.l = total[g.strand]+l/2, longer*l
		total[g.strand] += l
	}
	return total
}

// list finds the pairs of segments that may touch before anything has moved by more than
// half the skin.
func (s *solver) list() {
	total := s.arcs()
	s.pairs = s.pairs[:0]
	for i := range s.seg {
		a := &s.seg[i]
		ma := mid(s.x[a.a], s.x[a.b])
		la := norm(r3.Sub(s.x[a.b], s.x[a.a]))
		for j := i + 1; j < len(s.seg); j++ {
			b := &s.seg[j]
			if s.strands[a.strand].Fixed && s.strands[b.strand].Fixed {
				continue
			}
			d := s.apart(a, b)
			if a.strand == b.strand {
				along := math.Abs(a.s - b.s)
				if s.strands[a.strand].Closed {
					along = math.Min(along, total[a.strand]-along)
				}
				if along < 0.9*halfTurn*d {
					continue
				}
			}
			lb := norm(r3.Sub(s.x[b.b], s.x[b.a]))
			reach := d + skin + (la+lb)/2
			if r3.Norm2(r3.Sub(mid(s.x[b.a], s.x[b.b]), ma)) < reach*reach {
				s.pairs = append(s.pairs, [2]int32{int32(i), int32(j)})
			}
		}
	}
	s.since = append(s.since[:0], s.x...)
}

func mid(a, b r3.Vec) r3.Vec { return r3.Scale(0.5, r3.Add(a, b)) }

// apart is the distance that the axes of two segments keep.
func (s *solver) apart(a, b *segment) float64 {
	return (s.strands[a.strand].D + s.strands[b.strand].D) / 2
}

// far reports that two segments cannot touch, by their first nodes alone.
func (s *solver) far(a, b *segment, want float64) bool {
	d := s.x[a.a]
	e := s.x[b.a]
	x, y, z := d.X-e.X, d.Y-e.Y, d.Z-e.Z
	reach := want + a.l + b.l
	return x*x+y*y+z*z > reach*reach
}

// beside reports whether two points of one strand, at shares u and v of their segments,
// lie so near along it that they do not touch each other as two turns do: nearer than a
// half turn of the tightest bend never, a little farther only where the chord d between
// them, of length l, stands square on both.
func (s *solver) beside(a, b *segment, u, v float64, d r3.Vec, l float64, total []float64) bool {
	if a.strand != b.strand {
		return false
	}
	along := math.Abs(a.s + (u-0.5)*a.l/longer - b.s - (v-0.5)*b.l/longer)
	if s.strands[a.strand].Closed {
		along = math.Min(along, total[a.strand]-along)
	}
	switch across := s.strands[a.strand].D; {
	case along < halfTurn*across:
		return true
	case along < 1.1*math.Pi*across:
		return !square(d, l, r3.Sub(s.x[a.b], s.x[a.a]), r3.Sub(s.x[b.b], s.x[b.a]))
	}
	return false
}

// halfTurn is the arc within which a strand never touches itself: a little less than half
// the tightest circle, so that a ring that swings past it is still held.
const halfTurn = 0.93 * math.Pi / 2

// longer is how much longer than it is a segment counts where it is only asked whether two
// can touch at all.
const longer = 1.3

func (s *solver) step(tau float64) error {
	for i := range s.x {
		if s.inv[i] == 0 {
			s.p[i] = s.x[i]
			if to, ok := s.led[i]; ok {
				s.lead(i, to)
			}
			continue
		}
		v := r3.Scale(s.Momentum, r3.Sub(s.x[i], s.p[i]))
		s.p[i] = s.x[i]
		s.x[i] = r3.Add(s.x[i], v)
	}
	s.push(tau / s.Tau)
	goal := s.arcs()
	total := slices.Clone(goal)
	for k, n := range s.counts() {
		goal[k] = goal[k] / float64(n) * (1 - tau)
	}
	s.gap = 1
	for sweep := range 2 {
		s.lengths(goal, sweep == 1)
		s.bends(sweep == 1)
		s.contacts(total)
	}
	s.most = 0
	moved := 0.0
	for i := range s.x {
		d := r3.Sub(s.x[i], s.p[i])
		l := norm(d)
		if l > mostMove {
			s.x[i] = r3.Add(s.p[i], r3.Scale(mostMove/l, d))
			l = mostMove
		}
		s.most = math.Max(s.most, l)
		moved = math.Max(moved, r3.Norm2(r3.Sub(s.x[i], s.since[i])))
	}
	if moved > skin*skin/4 {
		s.list()
	}
	if s.gap < 0.4 {
		return ErrThrough
	}
	return nil
}

// push moves ropes as the hand does, by a share that falls as less and less is shortened.
// What is pushed in every step ends up as fast as Push says.
func (s *solver) push(share float64) {
	share *= 1 - s.Momentum
	for k, by := range s.Push {
		for i := s.first[k]; i < s.first[k]+len(s.strands[k].Nodes); i++ {
			if s.inv[i] > 0 {
				s.x[i] = r3.Add(s.x[i], r3.Scale(share, by))
			}
		}
	}
	if s.Toward > 0 {
		s.toward(share * s.Toward)
	}
	by := norm(s.Squeeze)
	if by == 0 {
		return
	}
	axis := r3.Scale(1/by, s.Squeeze)
	middle, n := 0.0, 0.0
	for i, v := range s.x {
		if s.inv[i] > 0 {
			middle, n = middle+r3.Dot(v, axis), n+1
		}
	}
	middle /= n
	for i, v := range s.x {
		if s.inv[i] > 0 {
			away := min(1, max(-1, r3.Dot(v, axis)-middle))
			s.x[i] = r3.Add(v, r3.Scale(-away*by*share, axis))
		}
	}
}

// toward moves every node toward the nearest place of a thing.
func (s *solver) toward(by float64) {
	for i, v := range s.x {
		if s.inv[i] == 0 {
			continue
		}
		near, least := r3.Vec{}, math.Inf(1)
		for _, st := range s.strands {
			if !st.Fixed || st.Peg {
				continue
			}
			for _, at := range st.Nodes {
				if d := r3.Norm2(r3.Sub(at, v)); d < least {
					near, least = at, d
				}
			}
		}
		if least < math.Inf(1) {
			s.x[i] = r3.Add(v, r3.Scale(by/math.Sqrt(least), r3.Sub(near, v)))
		}
	}
}

// lead takes a held node a small way to where it is led, and lets it rest there.
func (s *solver) lead(i int, to r3.Vec) {
	d := r3.Sub(to, s.x[i])
	if l := norm(d); l > ledBy {
		s.x[i] = r3.Add(s.x[i], r3.Scale(ledBy/l, d))
		return
	}
	s.x[i] = to
	delete(s.led, i)
}

// lengths keeps the segments of each strand even, and as short as they shall be.
func (s *solver) lengths(goal []float64, back bool) {
	n := len(s.seg)
	for k := range n {
		if back {
			k = n - 1 - k
		}
		g := s.seg[k]
		if s.strands[g.strand].Fixed {
			continue
		}
		wa, wb := s.inv[g.a], s.inv[g.b]
		if wa+wb == 0 {
			continue
		}
		d := r3.Sub(s.x[g.b], s.x[g.a])
		l := norm(d)
		if l == 0 {
			continue
		}
		c := r3.Scale((l-goal[g.strand])/l/(wa+wb), d)
		s.x[g.a] = r3.Add(s.x[g.a], r3.Scale(wa, c))
		s.x[g.b] = r3.Sub(s.x[g.b], r3.Scale(wb, c))
	}
}

// bends keeps the curvature of each strand at no more than that of a tube of its radius.
func (s *solver) bends(back bool) {
	for k, st := range s.strands {
		if st.Fixed || len(st.Nodes) < 3 {
			continue
		}
		n, first := len(st.Nodes), s.first[k]
		l := 0.0
		for i := 0; i+1 < n; i++ {
			l += norm(r3.Sub(s.x[first+i+1], s.x[first+i]))
		}
		l /= float64(n - 1)
		strides := [2]int{1, min(n/3, max(2, int(math.Round(0.35*st.D/l))))}
		for _, h := range strides {
			// The sagitta of an arc of radius D/2 over two chords of h segments.
			most := st.D / 2 * (1 - math.Cos(float64(h)*l/(st.D/2)))
			for i := range n {
				if back {
					i = n - 1 - i
				}
				a, b := i-h, i+h
				if st.Closed {
					a, b = (a+n)%n, b%n
				} else if a < 0 || b >= n {
					continue
				}
				s.bend(first+a, first+i, first+b, most)
			}
		}
	}
}

func (s *solver) bend(a, i, b int, most float64) {
	off := r3.Sub(s.x[i], mid(s.x[a], s.x[b]))
	l := norm(off)
	if l <= most || l == 0 {
		return
	}
	w := s.inv[i] + (s.inv[a]+s.inv[b])/4
	if w == 0 {
		return
	}
	c := r3.Scale((l-most)/l/w, off)
	s.x[i] = r3.Sub(s.x[i], r3.Scale(s.inv[i], c))
	s.x[a] = r3.Add(s.x[a], r3.Scale(s.inv[a]/2, c))
	s.x[b] = r3.Add(s.x[b], r3.Scale(s.inv[b]/2, c))
}

// meeting of two segments: where on each, the vector between and its length, and how long it
// should be.
type meeting struct {
	a, b          *segment
	u, v, l, want float64
	d             r3.Vec
}

// meet says where a pair is nearest, if that is within so many times the distance it should be
// and they do not merely follow one another along a strand.
func (s *solver) meet(pr [2]int32, within float64, total []float64, m *meeting) bool {
	m.a, m.b = &s.seg[pr[0]], &s.seg[pr[1]]
	m.want = s.apart(m.a, m.b)
	if s.far(m.a, m.b, within*m.want) {
		return false
	}
	m.u, m.v, m.d = closest(s.x[m.a.a], s.x[m.a.b], s.x[m.b.a], s.x[m.b.b])
	m.l = norm(m.d)
	return m.l <= within*m.want && !s.beside(m.a, m.b, m.u, m.v, m.d, m.l, total)
}

// contacts pushes tubes apart, and holds ropes by friction where they press on one another.
// It notes how near they had come.
func (s *solver) contacts(total []float64) {
	var m meeting
	for _, pr := range s.pairs {
		if !s.meet(pr, 1, total, &m) {
			continue
		}
		a, b, u, v, d, l, want := m.a, m.b, m.u, m.v, m.d, m.l, m.want
		if s.gap = min(s.gap, l/want); s.Blind || l == 0 {
			continue
		}
		w := [4]float64{1 - u, u, 1 - v, v}
		at := [4]int{a.a, a.b, b.a, b.b}
		sum := 0.0
		for k, c := range w {
			sum += c * c * s.inv[at[k]]
		}
		if sum == 0 {
			continue
		}
		push := (want - l) / sum
		n := r3.Scale(1/l, d) // from a to b
		s.shift(at, w, r3.Scale(push, n))
		if s.Mu > 0 && !s.strands[a.strand].Fixed && !s.strands[b.strand].Fixed {
			s.rub(at, w, n, s.Mu*(want-l), sum)
		}
	}
}

// shift moves the second segment along by, the first against it.
func (s *solver) shift(at [4]int, w [4]float64, by r3.Vec) {
	for k, i := range at {
		sign := 1.0
		if k < 2 {
			sign = -1
		}
		s.x[i] = r3.Add(s.x[i], r3.Scale(sign*w[k]*s.inv[i], by))
	}
}

// rub takes back what two tubes slid along each other in this step, up to the friction.
func (s *solver) rub(at [4]int, w [4]float64, n r3.Vec, most, sum float64) {
	var slid r3.Vec
	for k, i := range at {
		sign := 1.0
		if k < 2 {
			sign = -1
		}
		slid = r3.Add(slid, r3.Scale(sign*w[k], r3.Sub(s.x[i], s.p[i])))
	}
	slid = r3.Sub(slid, r3.Scale(r3.Dot(slid, n), n))
	l := norm(slid)
	if l == 0 {
		return
	}
	s.shift(at, w, r3.Scale(-math.Min(1, most/l)/sum, slid))
}

// square reports whether the chord stands nearly square on both directions.
func square(d r3.Vec, l float64, a, b r3.Vec) bool {
	const most = 0.25
	return math.Abs(r3.Dot(d, a)) < most*l*norm(a) && math.Abs(r3.Dot(d, b)) < most*l*norm(b)
}

// closest finds the closest points of two segments: shares along each, and the vector from
// the first to the second.
func closest(p1, q1, p2, q2 r3.Vec) (u, v float64, d r3.Vec) {
	d1, d2, r := r3.Sub(q1, p1), r3.Sub(q2, p2), r3.Sub(p1, p2)
	a, e, f := r3.Dot(d1, d1), r3.Dot(d2, d2), r3.Dot(d2, r)
	c, b := r3.Dot(d1, r), r3.Dot(d1, d2)
	if den := a*e - b*b; den > 1e-12 {
		u = clamp01((b*f - c*e) / den)
	}
	v = (b*u + f) / e
	if v < 0 {
		v, u = 0, clamp01(-c/a)
	} else if v > 1 {
		v, u = 1, clamp01((b-c)/a)
	}
	return u, v, r3.Sub(r3.Add(p2, r3.Scale(v, d2)), r3.Add(p1, r3.Scale(u, d1)))
}

func clamp01(x float64) float64 {
	if x < 0 {
		return 0
	}
	if x > 1 {
		return 1
	}
	return x
}

// norm is the length of a vector; nothing here is so long or so short that squares overflow.
func norm(v r3.Vec) float64 { return math.Sqrt(v.X*v.X + v.Y*v.Y + v.Z*v.Z) }

// measure finds the least distance of axes ÷ what it should be.
func (s *solver) measure() {
	total := s.arcs()
	s.gap = math.Inf(1)
	var m meeting
	for _, pr := range s.pairs {
		if s.meet(pr, 1, total, &m) && m.l/m.want < s.gap {
			s.gap, s.worst = m.l/m.want, mid(s.x[m.a.a], s.x[m.b.a])
		}
	}
	if math.IsInf(s.gap, 1) {
		s.gap = 1
	}
}

// length of all that moves.
func (s *solver) length() float64 {
	sum := 0.0
	for k, l := range s.arcs() {
		if !s.strands[k].Fixed {
			sum += l
		}
	}
	return sum
}

func (s *solver) out() []Strand {
	out := make([]Strand, len(s.strands))
	for k, st := range s.strands {
		st.Nodes = append([]r3.Vec(nil), s.x[s.first[k]:s.first[k]+len(st.Nodes)]...)
		out[k] = st
	}
	return out
}
