package bench

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/problem"
)

// Value is one pull as one knot saw it, in kilonewtons: it failed at that load, or held at
// least so much.
type Value struct {
	LoadKN float64
	Failed bool
}

// Sure is the share of cases in which an interval of this package holds the true value.
const Sure = 0.90

// Limits are the ends of such an interval. An end that the values do not bound is 0 below and
// infinite above.
type Limits struct{ Low, High float64 }

// Weibull is a distribution of strength fitted to values.
type Weibull struct {
	N, Failures int
	// Shape has no unit, ScaleKN is the load that a share of 1/e outlives.
	Shape, ScaleKN, LogLik float64

	sample sample
}

// TooFew says why nothing could be fitted.
type TooFew string

func (t TooFew) Error() string { return string(t) }

// Why nothing can be fitted: the likelihood has no maximum.
const (
	NothingFailed = TooFew("nothing failed")
	OneLoadFailed = TooFew("all that failed did so at the highest load of all")
)

// sample holds the logarithms of the loads, the highest subtracted so that no power runs over.
type sample struct {
	logs   []float64 // of every load, ≤ 0
	shift  float64   // what was subtracted
	failed float64   // how many failed
	sum    float64   // of the logs of those that failed
}

// FitWeibull fits a Weibull distribution. The error is a [TooFew] where there is nothing to
// fit, or names a load that is none.
func FitWeibull(values []Value) (Weibull, error) {
	s := sample{logs: make([]float64, 0, len(values)), shift: math.Inf(-1)}
	for i, v := range values {
		if !(v.LoadKN > 0) || math.IsInf(v.LoadKN, 0) {
			return Weibull{}, problem.New(fmt.Sprintf("pulls[%d].load_kn", i), fmt.Sprintf("%g is no load", v.LoadKN), "give kilonewtons above 0")
		}
		s.logs = append(s.logs, math.Log(v.LoadKN))
		s.shift = math.Max(s.shift, s.logs[i])
	}
	for i := range s.logs {
		s.logs[i] -= s.shift
		if values[i].Failed {
			s.failed++
			s.sum += s.logs[i]
		}
	}
	w := Weibull{N: len(values), Failures: int(s.failed), sample: s}
	switch {
	case s.failed == 0:
		return w, NothingFailed
	case s.sum > -1e-9*s.failed:
		return w, OneLoadFailed
	}
	// d/dk of the likelihood with the scale at its best: 1/k + mean log − Σxᵏ log x / Σxᵏ.
	w.Shape = zero(s.failed/-s.sum, func(k float64) (float64, float64) {
		n, n1, n2 := s.powers(k, 0)
		m := n1 / n
		return 1/k + s.sum/s.failed - m, -1/(k*k) - (n2/n - m*m)
	})
	n, _, _ := s.powers(w.Shape, 0)
	w.ScaleKN = math.Exp(s.shift + math.Log(n/s.failed)/w.Shape)
	w.LogLik = s.logLik(w.Shape)
	return w, nil
}

// powers are Σeᵏʸ, Σyeᵏʸ and Σy²eᵏʸ over y = log load − at.
func (s sample) powers(k, at float64) (n, n1, n2 float64) {
	for _, y := range s.logs {
		y -= at
		e := math.Exp(k * y)
		n += e
		n1 += y * e
		n2 += y * y * e
	}
	return n, n1, n2
}

// logLik is the log-likelihood at a shape, the scale at its best.
func (s sample) logLik(k float64) float64 {
	n, _, _ := s.powers(k, 0)
	return s.failed*(math.Log(k)-math.Log(n/s.failed)-1-s.shift) + (k-1)*s.sum
}

// logLikAt is the log-likelihood with the quantile of probability 1 − exp(−c) held at a load
// of that logarithm, the shape at its best: concave in the shape, so one zero.
func (s sample) logLikAt(log, c, guess float64) float64 {
	at := log - s.shift
	away := s.sum - s.failed*at // Σ over the failed of log(x/q)
	k := zero(guess, func(k float64) (float64, float64) {
		_, n1, n2 := s.powers(k, at)
		return s.failed/k + away - c*n1, -s.failed/(k*k) - c*n2
	})
	n, _, _ := s.powers(k, at)
	return s.failed*(math.Log(k)+math.Log(c)-s.shift) - s.sum + k*away - c*n
}

// zero finds where a decreasing function of k > 0 is zero: Newton's method in log k, kept
// between bounds.
func zero(k float64, f func(float64) (value, slope float64)) float64 {
	lo, hi := 0.0, math.Inf(1)
	for range 200 {
		v, d := f(k)
		if v == 0 {
			return k
		}
		if v > 0 {
			lo = k
		} else {
			hi = k
		}
		next := k * math.Exp(math.Max(-2, math.Min(2, -v/(d*k))))
		if !(next > lo && next < hi) {
			if math.IsInf(hi, 1) {
				next = 4 * k
			} else {
				next = (lo + hi) / 2
			}
		}
		if math.Abs(next-k) <= 1e-13*k {
			return next
		}
		k = next
	}
	return k
}

// MedianKN is the load that half outlive.
func (w Weibull) MedianKN() float64 { return w.Quantile(0.5) }

// Quantile is the load that a share p does not reach.
func (w Weibull) Quantile(p float64) float64 {
	return w.ScaleKN * math.Pow(-math.Log1p(-p), 1/w.Shape)
}

// Survival is the share that outlives a load.
func (w Weibull) Survival(kn float64) float64 {
	if kn <= 0 {
		return 1
	}
	return math.Exp(-math.Pow(kn/w.ScaleKN, w.Shape))
}

// allowed is by how much the log-likelihood may fall within an interval.
func (w Weibull) allowed() float64 {
	if w.Failures < 2 {
		// One failure leaves no degree of freedom; the interval is told as too wide to use.
		return distuv.F{D1: 1, D2: 0.5}.Quantile(Sure) / 2
	}
	return distuv.F{D1: 1, D2: float64(w.Failures - 1)}.Quantile(Sure) / 2
}

// ShapeLimits is the interval of the shape.
func (w Weibull) ShapeLimits() Limits {
	return w.limits(math.Log(w.Shape), func(log float64) float64 { return w.sample.logLik(math.Exp(log)) })
}

// ScaleLimits is the interval of the scale, in kN.
func (w Weibull) ScaleLimits() Limits { return w.quantileLimits(w.ScaleKN, 1) }

// QuantileLimits is the interval of a quantile, in kN.
func (w Weibull) QuantileLimits(p float64) Limits {
	return w.quantileLimits(w.Quantile(p), -math.Log1p(-p))
}

func (w Weibull) quantileLimits(kn, c float64) Limits {
	return w.limits(math.Log(kn), func(log float64) float64 { return w.sample.logLikAt(log, c, w.Shape) })
}

// limits walks out from the best value until the likelihood has fallen by what is allowed.
func (w Weibull) limits(best float64, logLik func(float64) float64) Limits {
	least := w.LogLik - w.allowed()
	end := func(way float64) (float64, bool) {
		in, out := best, best
		for step := 0.5 / w.Shape; ; step *= 2 {
			out = best + way*step
			if logLik(out) < least {
				break
			}
			if in = out; step > 60 {
				return 0, false // never: the values do not bound it
			}
		}
		for range 100 {
			mid := (in + out) / 2
			if math.Abs(out-in) < 1e-10 {
				break
			}
			if logLik(mid) < least {
				out = mid
			} else {
				in = mid
			}
		}
		return math.Exp(in), true
	}
	l := Limits{0, math.Inf(1)}
	if v, ok := end(-1); ok {
		l.Low = v
	}
	if v, ok := end(1); ok {
		l.High = v
	}
	return l
}
