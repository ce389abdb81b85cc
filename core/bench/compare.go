package bench

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/evidence"
	"oarweed/core/problem"
)

// Duel is how often each of two knots gave first when they were drawn against each other in
// one piece. Pulls in which neither gave do not count.
type Duel struct{ AGave, BGave int }

// Pulls is how many counted.
func (d Duel) Pulls() int { return d.AGave + d.BGave }

// BStronger is the chance that B outlives A in more than half of all pulls, when before the
// first every share was as likely.
func (d Duel) BStronger() float64 { return stronger(float64(d.AGave), float64(d.BGave)) }

func stronger(aGave, bGave float64) float64 {
	return distuv.Beta{Alpha: 1 + aGave, Beta: 1 + bGave}.Survival(0.5)
}

// EnoughSure is how sure one should be before it is taught; MostMore is how many further pulls
// are counted out.
const (
	EnoughSure = 0.95
	MostMore   = 200
)

// More is how many further pulls would make one as sure as is enough, if they went on as they
// went so far; 0 if one is, MostMore if not even so many would.
func (d Duel) More() int {
	share := (float64(d.AGave) + 1) / (float64(d.Pulls()) + 2)
	for more := range MostMore {
		a, b := float64(d.AGave)+share*float64(more), float64(d.BGave)+(1-share)*float64(more)
		if p := stronger(a, b); math.Max(p, 1-p) >= EnoughSure {
			return more
		}
	}
	return MostMore
}

// House is what the catalogue said of a share of strength and what own pulls make of it.
type House struct {
	// Prior is the catalogue's interval, Pulled that of the own pulls alone: 90 %.
	Prior  evidence.Interval `json:"prior"`
	Pulled evidence.Interval `json:"pulled"`
	// Value is both taken together, and Weight the share of the own pulls in it, 0 to 1.
	Value  evidence.Interval `json:"value"`
	Weight float64           `json:"weight"`

	dist distuv.LogNormal
}

// Dist is the distribution of the value: lognormal.
func (h House) Dist() evidence.Dist { return h.dist }

const ninety = 1.6448536269514722 // standard deviations from the middle to either end of 90 %

// Efficiency lays own pulls over what the catalogue says of a knot's efficiency. fit is of the
// loads at which it gave; lineKN is what the line bears without a knot. Both are taken as
// lognormal, and weigh as they are narrow: with few pulls the catalogue's interval holds.
func Efficiency(prior evidence.Interval, fit Weibull, lineKN float64) (House, error) {
	if !(lineKN > 0) {
		return House{}, problem.New("line.label_kn", "what the line bears is not known", "give its label strength, or its diameter")
	}
	l := fit.QuantileLimits(0.5)
	pulled := evidence.Interval{Low: l.Low / lineKN, Likely: fit.MedianKN() / lineKN, High: l.High / lineKN}
	h := House{Prior: prior, Pulled: pulled}
	d := prior.Dist()
	mu, sd := spread(d.Quantile(0.05), d.Quantile(0.5), d.Quantile(0.95))
	own, ownSD := spread(pulled.Low, pulled.Likely, pulled.High)
	if math.IsInf(pulled.High, 1) {
		h.Pulled.High = math.Exp(own + ninety*ownSD)
	}
	was, now := 1/(sd*sd), 1/(ownSD*ownSD)
	h.Weight = now / (was + now)
	h.dist = distuv.LogNormal{Mu: (was*mu + now*own) / (was + now), Sigma: math.Sqrt(1 / (was + now))}
	h.Value = evidence.Interval{Low: h.dist.Quantile(0.05), Likely: h.dist.Quantile(0.5), High: h.dist.Quantile(0.95)}
	return h, nil
}

// spread is the middle and the standard deviation of the logarithm; an interval open to one
// side is taken to reach as far as to the other one, and twice that.
func spread(low, middle, high float64) (mu, sd float64) {
	const least = 0.01 // no figure is surer than 1 %
	up, down := math.Log(high/middle), math.Log(middle/low)
	switch {
	case math.IsInf(up, 1) && math.IsInf(down, 1):
		up, down = 3, 3
	case math.IsInf(up, 1):
		up = 2 * down
	case math.IsInf(down, 1):
		down = 2 * up
	}
	return math.Log(middle), math.Max(least, math.Max(up, down)/ninety)
}

// Share is the share of values above a yardstick, with the interval of what may be expected of
// further pulls; those that held below it say nothing and are left out.
func Share(values []Value, yardstickKN float64) (above, of int, l Limits) {
	for _, v := range values {
		switch {
		case v.LoadKN >= yardstickKN:
			above, of = above+1, of+1
		case v.Failed:
			of++
		}
	}
	b := distuv.Beta{Alpha: float64(above) + 1, Beta: float64(of-above) + 1}
	return above, of, Limits{b.Quantile((1 - Sure) / 2), b.Quantile((1 + Sure) / 2)}
}
