package curve

import (
	"math"
	"sort"
)

// Point in drawing units: x to the right, y down. Its methods are those of a vector in
// the plane, written so that drawing sums read in the order in which they are done.
type Point struct{ X, Y float64 }

// Pt is the point at x, y.
func Pt(x, y float64) Point { return Point{x, y} }

func (p Point) Add(q Point) Point      { return Point{p.X + q.X, p.Y + q.Y} }
func (p Point) Sub(q Point) Point      { return Point{p.X - q.X, p.Y - q.Y} }
func (p Point) Times(k float64) Point  { return Point{p.X * k, p.Y * k} }
func (p Point) Len() float64           { return math.Hypot(p.X, p.Y) }
func (p Point) Cross(q Point) float64  { return p.X*q.Y - p.Y*q.X }
func (p Point) Dot(q Point) float64    { return p.X*q.X + p.Y*q.Y }
func (p Point) Unit() Point            { return p.Times(1 / math.Max(p.Len(), 1e-12)) }
func Lerp(a, b Point, t float64) Point { return Point{a.X + (b.X-a.X)*t, a.Y + (b.Y-a.Y)*t} }
func TurnAngle(a, b Point) float64     { return math.Atan2(a.Cross(b), a.Dot(b)) }

// Bezier is one cubic piece.
type Bezier [4]Point

func (b Bezier) At(t float64) Point {
	u := 1 - t
	return b[0].Times(u * u * u).Add(b[1].Times(3 * u * u * t)).Add(b[2].Times(3 * u * t * t)).Add(b[3].Times(t * t * t))
}

func (b Bezier) Tangent(t float64) Point {
	u := 1 - t
	d := b[1].Sub(b[0]).Times(3 * u * u).Add(b[2].Sub(b[1]).Times(6 * u * t)).Add(b[3].Sub(b[2]).Times(3 * t * t))
	if d.Len() < 1e-9 {
		return b[3].Sub(b[0]).Unit()
	}
	return d.Unit()
}

// between cuts out the part from t0 to t1 (de Casteljau).
func (b Bezier) Between(t0, t1 float64) Bezier {
	split := func(b Bezier, t float64) (Bezier, Bezier) {
		ab, bc, cd := Lerp(b[0], b[1], t), Lerp(b[1], b[2], t), Lerp(b[2], b[3], t)
		abc, bcd := Lerp(ab, bc, t), Lerp(bc, cd, t)
		m := Lerp(abc, bcd, t)
		return Bezier{b[0], ab, abc, m}, Bezier{m, bcd, cd, b[3]}
	}
	_, b = split(b, t0)
	if t0 < 1 {
		b, _ = split(b, (t1-t0)/(1-t0))
	}
	return b
}

// hobby gives the open spline of tension 1 and end curl 1 through the points
// (Hobby 1986; The METAFONTbook, ch. 14): the angles at the points solve a
// tridiagonal system that makes the mock curvature continuous.
func Through(p []Point) []Bezier {
	n := len(p) - 1
	if n == 1 { // nothing bends it: the two end conditions are one and the same
		return []Bezier{{p[0], Lerp(p[0], p[1], 1.0/3), Lerp(p[0], p[1], 2.0/3), p[1]}}
	}
	d := make([]float64, n)
	chord := make([]Point, n)
	for i := range n {
		chord[i] = p[i+1].Sub(p[i])
		d[i] = math.Max(chord[i].Len(), 1e-9)
	}
	psi := make([]float64, n+1)
	for i := 1; i < n; i++ {
		psi[i] = TurnAngle(chord[i-1], chord[i])
	}
	// Rows a·θ[i−1] + b·θ[i] + c·θ[i+1] = r, swept forward then back.
	theta := make([]float64, n+1)
	c := make([]float64, n+1)
	r := make([]float64, n+1)
	c[0], r[0] = 1, -psi[1]
	for i := 1; i <= n; i++ {
		var a, b, cc, rr float64
		if i == n {
			a, b = 1, 1 // curl 1 at the end
		} else {
			a, cc = 1/d[i-1], 1/d[i]
			b = 2*a + 2*cc
			next := 0.0
			if i < n-1 {
				next = psi[i+1]
			}
			rr = -(2*psi[i]*a + next*cc)
		}
		m := b - a*c[i-1]
		c[i] = cc / m
		r[i] = (rr - a*r[i-1]) / m
	}
	theta[n] = r[n]
	for i := n - 1; i >= 0; i-- {
		theta[i] = r[i] - c[i]*theta[i+1]
	}
	out := make([]Bezier, n)
	for i := range n {
		phi := -psi[i+1] - theta[i+1]
		if i == n-1 {
			phi = -theta[n]
		}
		rho, sigma := velocity(theta[i], phi), velocity(phi, theta[i])
		out[i] = Bezier{
			p[i], p[i].Add(rotate(chord[i], theta[i]).Times(rho / 3)),
			p[i+1].Sub(rotate(chord[i], -phi).Times(sigma / 3)), p[i+1],
		}
	}
	return out
}

// velocity is Hobby's ρ(θ, φ).
func velocity(theta, phi float64) float64 {
	st, ct, sp, cp := math.Sin(theta), math.Cos(theta), math.Sin(phi), math.Cos(phi)
	num := 2 + math.Sqrt2*(st-sp/16)*(sp-st/16)*(ct-cp)
	return num / (1 + (math.Sqrt(5)-1)/2*ct + (3-math.Sqrt(5))/2*cp)
}

func rotate(p Point, a float64) Point {
	s, c := math.Sincos(a)
	return Point{p.X*c - p.Y*s, p.X*s + p.Y*c}
}

// Curve is a spline with its arc length tabulated.
type Curve struct {
	pieces []Bezier
	// S holds the arc length at each sample, Samples per piece plus one in all.
	S      []float64
	Points []Point
}

const Samples = 24

func New(pieces []Bezier) *Curve {
	c := &Curve{pieces: pieces}
	for i, b := range pieces {
		for k := range Samples {
			if i == 0 && k == 0 {
				c.Points = append(c.Points, b[0])
				c.S = append(c.S, 0)
			}
			q := b.At(float64(k+1) / Samples)
			c.S = append(c.S, c.S[len(c.S)-1]+q.Sub(c.Points[len(c.Points)-1]).Len())
			c.Points = append(c.Points, q)
		}
	}
	return c
}

// length of the whole curve, and nodeS the arc length at node i.
func (c *Curve) Length() float64     { return c.S[len(c.S)-1] }
func (c *Curve) NodeS(i int) float64 { return c.S[i*Samples] }

// param turns arc length into piece number and parameter.
func (c *Curve) Param(s float64) (int, float64) {
	s = math.Min(math.Max(s, 0), c.Length())
	k := sort.SearchFloat64s(c.S, s)
	if k > 0 {
		k--
	}
	k = min(k, len(c.S)-2)
	f := 0.0
	if w := c.S[k+1] - c.S[k]; w > 0 {
		f = (s - c.S[k]) / w
	}
	return k / Samples, (float64(k%Samples) + f) / Samples
}

func (c *Curve) At(s float64) Point {
	i, t := c.Param(s)
	return c.pieces[i].At(t)
}

func (c *Curve) Tangent(s float64) Point {
	i, t := c.Param(s)
	return c.pieces[i].Tangent(t)
}

// cut gives the Béziers between two arc lengths.
func (c *Curve) Cut(s0, s1 float64) []Bezier {
	i0, t0 := c.Param(s0)
	i1, t1 := c.Param(s1)
	if i0 == i1 {
		return []Bezier{c.pieces[i0].Between(t0, t1)}
	}
	var out []Bezier
	if t0 < 1-1e-6 {
		out = append(out, c.pieces[i0].Between(t0, 1))
	}
	out = append(out, c.pieces[i0+1:i1]...)
	if t1 > 1e-6 {
		out = append(out, c.pieces[i1].Between(0, t1))
	}
	return out
}

// radius of curvature at sample k, from three Samples.
func (c *Curve) Radius(k int) float64 {
	a, b, d := c.Points[k-1], c.Points[k], c.Points[k+1]
	area := math.Abs(b.Sub(a).Cross(d.Sub(a)))
	if area < 1e-12 {
		return math.Inf(1)
	}
	return b.Sub(a).Len() * d.Sub(b).Len() * d.Sub(a).Len() / (2 * area)
}

// meet gives where segments ab and cd cross, as fractions along each.
func Meet(a, b, c, d Point) (t, u float64, ok bool) {
	r, s := b.Sub(a), d.Sub(c)
	den := r.Cross(s)
	if math.Abs(den) < 1e-14 {
		return 0, 0, false
	}
	t = c.Sub(a).Cross(s) / den
	u = c.Sub(a).Cross(r) / den
	return t, u, t >= 0 && t < 1 && u >= 0 && u < 1
}
