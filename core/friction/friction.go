// Package friction tells whether a hitch holds, from the friction between the
// rope and the object and between rope and rope.
//
// # Model
//
// A hitch is a list of events met on the way from the load to the tag:
//
//   - a turn through angle φ round an object of radius R: T_in ≤ T_out·e^{μφ}
//     (Euler and Eytelwein, published);
//   - passing under another strand whose tension is T_o:
//     T_in ≤ T_out + s·η·T_o, with s = 1 where the upper strand is bent over both
//     sides and s = ½ where it leaves the object at the crossing;
//   - a mark: the place where a strand crosses over, named so that an "under"
//     can refer to its tension.
//
// The riding-turn idea is B. F. Bayman's (American Journal of Physics 45, 1977,
// pp. 185–190). The geometry of η is our own:
//
//	η = (μ_rr + μ_ro)·2 sin α,  cos α = (R + r_o)/(R + 2 r_u + r_o)
//
// with r_u and r_o the radii of the strand below and the strand above: the
// upper strand must lift off the object to climb the lower one.
//
// The tensions obey T = A·T + b·T_tag with A ≥ 0. The hitch locks, that is holds
// any load with no hand on the tag, once the spectral radius of A reaches 1:
// from there on I − A is no longer an M-matrix. The critical friction μ_c is
// the smallest coefficient at which that happens; unlike the radius it does not
// depend on how the rope is cut into sections.
//
// # Limits
//
// Rope is taken as thin against its bends, without stiffness and without
// squash; friction follows Coulomb. A pull along the object (rolling hitch) is
// judged by a second condition, see [Hitch.Axial].
package friction

import (
	"math"

	"gonum.org/v1/gonum/mat"
)

// Kind of an event.
type Kind int

const (
	Turn  Kind = iota // bend round an object
	Under             // pass beneath the strand marked Name
	Mark              // the strand crosses over here; gives the place a name
)

// On says what a turn or a crossing bears on.
type On int

const (
	Object On = iota // the post, rail, ring or cleat
	Own              // the rope's own standing part
)

// Event is one thing the rope does on its way from the load to the tag.
type Event struct {
	Kind Kind
	On   On
	// Angle of a turn, radians.
	Angle float64
	// Name of a mark, or of the mark an under refers to.
	Name string
	// Sides is the share of η that acts at an under: 1 or ½.
	Sides float64
}

// Hitch is a named event list.
type Hitch struct {
	ID     string
	Events []Event
	// Axial is the number of turns, riding ones and the last, that must also hold
	// along the object; zero where the pull is across it.
	Axial int
}

// Geometry holds the radii that matter, in any one unit.
type Geometry struct {
	// Object is the radius of what the hitch is made on, Rope that of the rope.
	Object, Rope float64
}

// Mu holds the two coefficients.
type Mu struct {
	Rope   float64 // rope on rope
	Object float64 // rope on the object
}

// Scale multiplies both coefficients.
func (m Mu) Scale(k float64) Mu { return Mu{m.Rope * k, m.Object * k} }

// Eta is the pinch factor η of a strand between an object of radius object and
// an upper strand, both strands of radius rope.
func Eta(object, rope float64, m Mu) float64 {
	c := (object + rope) / (object + 3*rope)
	return (m.Rope + m.Object) * 2 * math.Sqrt(1-c*c)
}

// network is T = A·T + b·T_tag over the sections before the tag. It is filled
// anew for each pair of coefficients, so that a bisection allocates once.
type network struct {
	hitch Hitch
	geom  Geometry
	n     int
	// over[i] is the section whose tension the strand above event i carries.
	over []int
	a, c []float64 // row-major n × n: A, and room to eliminate in
	b, x []float64
}

func (h Hitch) network(g Geometry) *network {
	w := &network{hitch: h, geom: g, over: make([]int, len(h.Events))}
	for _, e := range h.Events {
		if e.Kind != Mark {
			w.n++
		}
	}
	for i, e := range h.Events {
		if e.Kind != Under {
			continue
		}
		section := 0
		for _, m := range h.Events {
			if m.Kind == Mark && m.Name == e.Name {
				w.over[i] = section
				break
			}
			if m.Kind != Mark {
				section++
			}
		}
	}
	room := make([]float64, 2*w.n*w.n+2*w.n)
	w.a, room = room[:w.n*w.n], room[w.n*w.n:]
	w.c, room = room[:w.n*w.n], room[w.n*w.n:]
	w.b, w.x = room[:w.n], room[w.n:]
	return w
}

// fill sets A and b for coefficients m.
func (w *network) fill(m Mu) *network {
	clear(w.a)
	clear(w.b)
	add := func(row, col int, v float64) {
		if col == w.n {
			w.b[row] += v
		} else {
			w.a[row*w.n+col] += v
		}
	}
	etaObject := Eta(w.geom.Object, w.geom.Rope, m)
	etaOwn := Eta(w.geom.Rope, w.geom.Rope, Mu{m.Rope, m.Rope})
	i := 0
	for k, e := range w.hitch.Events {
		mu, eta := m.Object, etaObject
		if e.On == Own {
			mu, eta = m.Rope, etaOwn
		}
		switch e.Kind {
		case Turn:
			add(i, i+1, math.Exp(mu*e.Angle))
			i++
		case Under:
			add(i, i+1, 1)
			add(i, w.over[k], e.Sides*eta)
			i++
		}
	}
	return w
}

// solve eliminates I − A without pivoting. The matrix has no positive entry off
// its diagonal, so it is a nonsingular M-matrix exactly when every pivot is
// positive (Berman and Plemmons, Nonnegative Matrices in the Mathematical
// Sciences, ch. 6), which is when the spectral radius of A is below 1. The
// result is then the tension at the load for a tag tension of 1.
func (w *network) solve() (ratio float64, locks bool) {
	n, x, c := w.n, w.x, w.c
	copy(x, w.b)
	for i, v := range w.a {
		c[i] = -v
	}
	for i := range n {
		c[i*n+i]++
	}
	for k := range n {
		p := c[k*n+k]
		if p <= 1e-12 {
			return math.Inf(1), true
		}
		for i := k + 1; i < n; i++ {
			f := c[i*n+k] / p
			if f == 0 {
				continue
			}
			for j := k; j < n; j++ {
				c[i*n+j] -= f * c[k*n+j]
			}
			x[i] -= f * x[k]
		}
	}
	for i := n - 1; i >= 0; i-- {
		for j := i + 1; j < n; j++ {
			x[i] -= c[i*n+j] * x[j]
		}
		x[i] /= c[i*n+i]
	}
	return x[0], false
}

// SpectralRadius of A: the hitch locks once it reaches 1.
func (h Hitch) SpectralRadius(g Geometry, m Mu) float64 {
	w := h.network(g).fill(m)
	var e mat.Eigen
	if !e.Factorize(mat.NewDense(w.n, w.n, w.a), mat.EigenNone) {
		return math.NaN()
	}
	r := 0.0
	for _, v := range e.Values(nil) {
		r = math.Max(r, math.Hypot(real(v), imag(v)))
	}
	return r
}

// Solver works one hitch in one geometry out for many pairs of coefficients. It is not
// for use by several goroutines at once.
type Solver struct{ w *network }

// Solver of the hitch in a geometry.
func (h Hitch) Solver(g Geometry) *Solver { return &Solver{h.network(g)} }

// HoldRatio as [Hitch.HoldRatio].
func (s *Solver) HoldRatio(m Mu) float64 { return s.w.ratio(m) }

// Gain is how much of its own tension a crossing gives back to itself: 1 − det(I − A).
// For a hitch with one such loop it is η·e^{μφ} of that loop, and it locks from 1 on.
func (s *Solver) Gain(m Mu) float64 {
	s.w.fill(m).solve()
	det := 1.0
	for i := range s.w.n {
		p := s.w.c[i*s.w.n+i]
		if p <= 1e-12 {
			return s.w.gainPastLocking()
		}
		det *= p
	}
	return 1 - det
}

// gainPastLocking takes the determinant by elimination with pivoting, which solve does
// not need: it stops at the first pivot that is not positive.
func (w *network) gainPastLocking() float64 {
	m := mat.NewDense(w.n, w.n, nil)
	for i := range w.n {
		for j := range w.n {
			v := -w.a[i*w.n+j]
			if i == j {
				v++
			}
			m.Set(i, j, v)
		}
	}
	return 1 - mat.Det(m)
}

// Locks reports whether the hitch holds any load with no hand on the tag.
func (h Hitch) Locks(g Geometry, m Mu) bool {
	return math.IsInf(h.HoldRatio(g, m), 1)
}

// HoldRatio is load ÷ tag force at the point of slipping: +Inf when the hitch
// locks, 0 when no hand on the tag can hold it (a pull along the object with
// too little friction).
func (h Hitch) HoldRatio(g Geometry, m Mu) float64 {
	return h.network(g).ratio(m)
}

func (w *network) ratio(m Mu) float64 {
	ratio, _ := w.fill(m).solve()
	if w.hitch.Axial == 0 {
		return ratio
	}
	tag, ok := axialTag(w.hitch, w.geom, m)
	switch {
	case !ok:
		return 0
	case tag > 0:
		return math.Min(ratio, 1/tag)
	}
	return ratio
}

// axialTag judges the turns as one helix about to slip along the object. Its
// friction has a part c against unwinding and a part a = √(μ²−c²) along the
// object; the tension falls as e^{−cφ} from the load's, so the turns carry
// a/c·(1−e^{−cΦ}) of the load, which must be at least all of it. The tag needs
// what is then left beyond the pinch η of the last crossing. It reports the tag
// force per unit of load, and whether any c does it without one or with one.
func axialTag(h Hitch, g Geometry, m Mu) (tag float64, ok bool) {
	mu, phi := m.Object, 2*math.Pi*float64(h.Axial)
	eta := Eta(g.Object, g.Rope, m)
	carries := func(c float64) float64 {
		a := math.Sqrt(math.Max(0, mu*mu-c*c))
		if c < 1e-9 {
			return a * phi
		}
		return a / c * (1 - math.Exp(-c*phi))
	}
	left := func(c float64) float64 {
		return math.Exp(-c*phi) - eta*math.Exp(-c*(phi-2*math.Pi))
	}
	need := 0.0 // the c at which the last crossing alone holds the tag
	if eta < 1 {
		need = -math.Log(eta) / (2 * math.Pi)
	}
	if need <= mu && carries(need) >= 1 {
		return 0, true
	}
	if carries(0) < 1 {
		return 0, false
	}
	lo, hi := 0.0, math.Min(mu, need)
	for range 50 {
		mid := (lo + hi) / 2
		if carries(mid) >= 1 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return math.Max(0, left(lo)), true
}

// CriticalMu is the smallest s at which the hitch locks with coefficients
// s·shape; +Inf if it does not lock even at s = 3 (bare turns never do).
func (h Hitch) CriticalMu(g Geometry, shape Mu) float64 {
	w := h.network(g)
	locks := func(s float64) bool { return math.IsInf(w.ratio(shape.Scale(s)), 1) }
	lo, hi := 0.0, 3.0
	if !locks(hi) {
		return math.Inf(1)
	}
	for range 30 { // to 3·10⁻⁹
		mid := (lo + hi) / 2
		if locks(mid) {
			hi = mid
		} else {
			lo = mid
		}
	}
	return hi
}

// TurnsToHold is the number of bare turns that let a hand force hold a load:
// ln(load/hand)/(2πμ); 0 if the hand is already enough, +Inf without friction.
func TurnsToHold(load, hand, mu float64) float64 {
	if hand >= load {
		return 0
	}
	return math.Log(load/hand) / (2 * math.Pi * mu)
}

// HandAfter is what a hand must hold after so many turns: [TurnsToHold] turned round.
func HandAfter(load, turns, mu float64) float64 { return load * math.Exp(-2*math.Pi*mu*turns) }
