package evidence

import "gonum.org/v1/gonum/stat/distuv"

// Dist is how a number is spread: what a figure claims beyond its three values.
// Gonum's distuv distributions satisfy it.
type Dist interface {
	// Quantile is the value that a draw stays below with probability p, 0 to 1.
	Quantile(p float64) float64
	// Survival is the probability that a draw exceeds x.
	Survival(x float64) float64
}

// Exact is the distribution of a number known without spread. A draw equals it,
// and counts as reaching it.
type Exact float64

// Quantile is the number itself.
func (e Exact) Quantile(float64) float64 { return float64(e) }

// Survival is 1 up to the number and 0 beyond.
func (e Exact) Survival(x float64) float64 {
	if x <= float64(e) {
		return 1
	}
	return 0
}

// Dist is the triangular distribution over the interval: it claims no more than
// the three numbers.
func (i Interval) Dist() Dist {
	if i.High <= i.Low {
		return Exact(i.Likely)
	}
	return distuv.NewTriangle(i.Low, i.High, i.Likely, nil)
}

// Dist is the figure's own distribution where it was measured, else the triangle
// over its interval.
func (f Figure) Dist() Dist {
	if f.measured != nil {
		return f.measured
	}
	return f.Interval.Dist()
}

// Measured is the figure with a distribution of its own, as a bench gives it.
func (f Figure) Measured(d Dist) Figure {
	f.measured = d
	return f
}

// Unit of a figure.
type Unit string

const (
	One        Unit = "" // a share or a coefficient
	Newton     Unit = "N"
	Kilonewton Unit = "kN"
	Second     Unit = "s"
	Diameters  Unit = "diameters" // of the line
)

// InKN is a figure in newtons said in kilonewtons. It has no meaning for figures
// in other units.
func (f Figure) InKN() Figure {
	return Figure{Interval: f.Scale(1e-3), Unit: Kilonewton, Tag: f.Tag, Source: f.Source, measured: scaled(f.measured, 1e-3)}
}

// scaledDist is a distribution in another unit.
type scaledDist struct {
	Dist
	k float64
}

func scaled(d Dist, k float64) Dist {
	if d == nil {
		return nil
	}
	return scaledDist{d, k}
}

func (s scaledDist) Quantile(p float64) float64 { return s.k * s.Dist.Quantile(p) }
func (s scaledDist) Survival(x float64) float64 { return s.Dist.Survival(x / s.k) }
