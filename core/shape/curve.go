package shape

import (
	"math"
	"sort"
)

func (p Point) add(q Point) Point      { return Point{p.X + q.X, p.Y + q.Y} }
func (p Point) sub(q Point) Point      { return Point{p.X - q.X, p.Y - q.Y} }
func (p Point) times(k float64) Point  { return Point{p.X * k, p.Y * k} }
func (p Point) len() float64           { return math.Hypot(p.X, p.Y) }
func (p Point) cross(q Point) float64  { return p.X*q.Y - p.Y*q.X }
func (p Point) dot(q Point) float64    { return p.X*q.X + p.Y*q.Y }
func (p Point) unit() Point            { return p.times(1 / math.Max(p.len(), 1e-12)) }
func lerp(a, b Point, t float64) Point { return Point{a.X + (b.X-a.X)*t, a.Y + (b.Y-a.Y)*t} }
func turnAngle(a, b Point) float64     { return math.Atan2(a.cross(b), a.dot(b)) }

// bezier is one cubic piece.
type bezier [4]Point

func (b bezier) at(t float64) Point {
	u := 1 - t
	return b[0].times(u * u * u).add(b[1].times(3 * u * u * t)).add(b[2].times(3 * u * t * t)).add(b[3].times(t * t * t))
}

func (b bezier) tangent(t float64) Point {
	u := 1 - t
	d := b[1].sub(b[0]).times(3 * u * u).add(b[2].sub(b[1]).times(6 * u * t)).add(b[3].sub(b[2]).times(3 * t * t))
	if d.len() < 1e-9 {
		return b[3].sub(b[0]).unit()
	}
	return d.unit()
}

// between cuts out the part from t0 to t1 (de Casteljau).
func (b bezier) between(t0, t1 float64) bezier {
	split := func(b bezier, t float64) (bezier, bezier) {
		ab, bc, cd := lerp(b[0], b[1], t), lerp(b[1], b[2], t), lerp(b[2], b[3], t)
		abc, bcd := lerp(ab, bc, t), lerp(bc, cd, t)
		m := lerp(abc, bcd, t)
		return bezier{b[0], ab, abc, m}, bezier{m, bcd, cd, b[3]}
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
func hobby(p []Point) []bezier {
	n := len(p) - 1
	if n == 1 { // nothing bends it: the two end conditions are one and the same
		return []bezier{{p[0], lerp(p[0], p[1], 1.0/3), lerp(p[0], p[1], 2.0/3), p[1]}}
	}
	d := make([]float64, n)
	chord := make([]Point, n)
	for i := range n {
		chord[i] = p[i+1].sub(p[i])
		d[i] = math.Max(chord[i].len(), 1e-9)
	}
	psi := make([]float64, n+1)
	for i := 1; i < n; i++ {
		psi[i] = turnAngle(chord[i-1], chord[i])
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
	out := make([]bezier, n)
	for i := range n {
		phi := -psi[i+1] - theta[i+1]
		if i == n-1 {
			phi = -theta[n]
		}
		rho, sigma := velocity(theta[i], phi), velocity(phi, theta[i])
		out[i] = bezier{
			p[i], p[i].add(rotate(chord[i], theta[i]).times(rho / 3)),
			p[i+1].sub(rotate(chord[i], -phi).times(sigma / 3)), p[i+1],
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

// curve is a spline with its arc length tabulated.
type curve struct {
	pieces []bezier
	// s holds the arc length at each sample, samples per piece plus one in all.
	s  []float64
	pt []Point
}

const samples = 24

func newCurve(pieces []bezier) *curve {
	c := &curve{pieces: pieces}
	for i, b := range pieces {
		for k := range samples {
			if i == 0 && k == 0 {
				c.pt = append(c.pt, b[0])
				c.s = append(c.s, 0)
			}
			q := b.at(float64(k+1) / samples)
			c.s = append(c.s, c.s[len(c.s)-1]+q.sub(c.pt[len(c.pt)-1]).len())
			c.pt = append(c.pt, q)
		}
	}
	return c
}

// length of the whole curve, and nodeS the arc length at node i.
func (c *curve) length() float64     { return c.s[len(c.s)-1] }
func (c *curve) nodeS(i int) float64 { return c.s[i*samples] }

// param turns arc length into piece number and parameter.
func (c *curve) param(s float64) (int, float64) {
	s = math.Min(math.Max(s, 0), c.length())
	k := sort.SearchFloat64s(c.s, s)
	if k > 0 {
		k--
	}
	k = min(k, len(c.s)-2)
	f := 0.0
	if w := c.s[k+1] - c.s[k]; w > 0 {
		f = (s - c.s[k]) / w
	}
	return k / samples, (float64(k%samples) + f) / samples
}

func (c *curve) at(s float64) Point {
	i, t := c.param(s)
	return c.pieces[i].at(t)
}

func (c *curve) tangent(s float64) Point {
	i, t := c.param(s)
	return c.pieces[i].tangent(t)
}

// cut gives the Béziers between two arc lengths.
func (c *curve) cut(s0, s1 float64) []bezier {
	i0, t0 := c.param(s0)
	i1, t1 := c.param(s1)
	if i0 == i1 {
		return []bezier{c.pieces[i0].between(t0, t1)}
	}
	var out []bezier
	if t0 < 1-1e-6 {
		out = append(out, c.pieces[i0].between(t0, 1))
	}
	out = append(out, c.pieces[i0+1:i1]...)
	if t1 > 1e-6 {
		out = append(out, c.pieces[i1].between(0, t1))
	}
	return out
}

// radius of curvature at sample k, from three samples.
func (c *curve) radius(k int) float64 {
	a, b, d := c.pt[k-1], c.pt[k], c.pt[k+1]
	area := math.Abs(b.sub(a).cross(d.sub(a)))
	if area < 1e-12 {
		return math.Inf(1)
	}
	return b.sub(a).len() * d.sub(b).len() * d.sub(a).len() / (2 * area)
}

// meet gives where segments ab and cd cross, as fractions along each.
func meet(a, b, c, d Point) (t, u float64, ok bool) {
	r, s := b.sub(a), d.sub(c)
	den := r.cross(s)
	if math.Abs(den) < 1e-14 {
		return 0, 0, false
	}
	t = c.sub(a).cross(s) / den
	u = c.sub(a).cross(r) / den
	return t, u, t >= 0 && t < 1 && u >= 0 && u < 1
}
