package snug

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"
)

// Mark is a number that points to a place of a figure.
type Mark struct {
	Place Place
	Text  string
}

// Place of a knot that is looked at.
type Place int

// The whole of it where ropes grip; the end where it comes out; the standing part where it goes
// in; the eye.
const (
	Body Place = iota
	End
	Standing
	Eye
)

// places are where the first rope that has them shows them: of a join the second rope's end and
// standing part are as good.
func places(strands []Strand) map[Place]r3.Vec {
	s := &solver{strands: strands}
	touched, inside := s.touches()
	out := map[Place]r3.Vec{}
	var middle r3.Vec
	n := 0.0
	for k, st := range strands {
		if st.Fixed {
			continue
		}
		first, last, since, widest := -1, -1, -1, 0.0
		for i, g := range s.seg {
			if g.strand != k || !touched[i] {
				continue
			}
			if first < 0 {
				first = i
			}
			if inside[i] || n == 0 {
				middle, n = r3.Add(middle, s.x[g.a]), n+1
			}
			if since >= 0 && g.s-s.seg[since].s > max(openEye, widest) {
				widest = g.s - s.seg[since].s
				out[Eye] = s.along(since, eyeOn)
			}
			last, since = i, i
		}
		if _, ok := out[Standing]; first >= 0 && !ok {
			out[Standing], out[End] = s.along(first, -1.2), s.along(last, 2)
		}
	}
	if n > 0 {
		out[Body] = r3.Scale(1/n, middle)
	}
	return out
}

// eyeOn is how far along an eye its mark stands, in diameters: near enough to be in the picture.
const eyeOn = 2.5

// along is the place so far on from a segment, in its strand.
func (s *solver) along(from int, by float64) r3.Vec {
	g := s.seg[from]
	best := s.x[g.a]
	for _, h := range s.seg {
		if h.strand == g.strand && (h.s-g.s)*by >= 0 && (h.s-g.s)*(h.s-g.s) <= by*by {
			best = s.x[h.a]
			if by < 0 {
				return best // the first of the strand that is near enough
			}
		}
	}
	return best
}

// marks draws numbers beside their places, each with a stroke to it.
func marks(out *strings.Builder, strands []Strand, list []Mark, low, high r3.Vec) {
	at := places(strands)
	var taken []r3.Vec
	centre := mid(low, high)
	r := 0.035 * (high.X - low.X + high.Y - low.Y)
	for _, m := range list {
		p, ok := at[m.Place]
		if !ok {
			m.Place = Body
			p = at[Body]
		}
		// Away from the middle; the body's numbers stand above one another at its upper left.
		d := r3.Vec{X: p.X - centre.X, Y: p.Y - centre.Y}
		if m.Place == Body || norm(d) < r {
			d = r3.Vec{X: -0.6, Y: 1}
		}
		d = r3.Unit(d)
		side := r3.Vec{X: d.Y, Y: -d.X}
		var q r3.Vec
		for _, k := range []float64{0, 1, -1, 2, -2, 3, -3} {
			q = r3.Add(p, r3.Add(r3.Scale(2.6*r, d), r3.Scale(2.3*r*k, side)))
			q.X = min(max(q.X, low.X+1.2*r), high.X-1.2*r)
			q.Y = min(max(q.Y, low.Y+1.2*r), high.Y-1.2*r)
			if !slices.ContainsFunc(taken, func(t r3.Vec) bool { return math.Hypot(t.X-q.X, t.Y-q.Y) < 2.1*r }) {
				break
			}
		}
		taken = append(taken, q)
		// Browsers do not set text smaller than some pixels, whatever it is scaled by: it is set
		// large, and scaled down.
		fmt.Fprintf(out, `<path d="M%s %sL%s %s" stroke="var(--ink,#132b26)" stroke-width="%s" fill="none"/><circle cx="%s" cy="%s" r="%s" fill="var(--sheet,#fffdf7)" stroke="var(--ink,#132b26)" stroke-width="%s"/><text transform="translate(%s %s)scale(%.3f)" font-size="10" font-weight="700" text-anchor="middle" fill="var(--ink,#132b26)">%s</text>`,
			num(q.X), num(-q.Y), num(p.X), num(-p.Y), num(0.14*r), num(q.X), num(-q.Y), num(r), num(0.14*r), num(q.X), num(-q.Y+0.42*r), 0.125*r, escape(m.Text))
	}
}
