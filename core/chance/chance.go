// Package chance draws a joint, or a rig, many times from the intervals of its
// hold, its lines' strength and its knots, and counts what happens.
//
// The random numbers are always the same for the same place, so that two knots or
// two rigs differ only by what they are. They are made anew for each call: nothing is
// kept between calls, and a call takes 80 kB for each place drawn.
package chance

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/stat"

	"oarweed/core/evidence"
	"oarweed/core/judge"
	"oarweed/core/knot"
)

// Draws is how often a rig is drawn.
const Draws = 10_000

// Outcome counts what happened in all draws at the highest load expected.
type Outcome struct {
	// Holds + Slips + Breaks = 1.
	Holds, Slips, Breaks float64
	// ByClass: no friction model decides the hold; the chance that it holds is read from
	// a class known from use.
	ByClass bool
	// P5, P50 and P95: while every knot holds, 5, 50 and 95 of 100 draws bear less, in
	// newtons.
	P5, P50, P95 float64
}

// Sample is what a joint or a line bears in each draw, in newtons.
type Sample struct {
	Bears []float64
	// Gives tells in which draws the knot does not hold; nil for a line by itself.
	Gives []bool
	// Slips: at its limit it slips rather than breaks.
	Slips bool
	// ByClass: no friction model decides whether it holds.
	ByClass bool
}

// uniform gives the random numbers that belong to a place.
func uniform(place string) *rand.Rand {
	h := fnv.New64a()
	_, _ = h.Write([]byte(place))
	return rand.New(rand.NewPCG(h.Sum64(), 20260101))
}

func drawn(d evidence.Dist, place string) []float64 {
	u := uniform(place)
	out := make([]float64, Draws)
	for i := range out {
		out[i] = d.Quantile(u.Float64())
	}
	return out
}

// Line draws a line's capacity. place tells the lines of a chain apart.
func Line(capacity evidence.Figure, place string) Sample {
	return Sample{Bears: drawn(capacity.Dist(), "line"+place)}
}

// Joint draws a judged joint in a line that has been drawn. place tells the joints of
// a chain apart.
func Joint(v judge.Verdict, line Sample, place string) Sample {
	s := Sample{Bears: drawn(v.Strength.Share.Dist(), "efficiency"+place), Slips: v.Strength.Fails != knot.Breaks}
	for i := range s.Bears {
		s.Bears[i] *= line.Bears[i]
	}
	// The chance that it holds is itself not known for certain: in each draw it is another
	// one of its interval, and the knot gives where an even number lies above it.
	h := v.Now()
	s.ByClass = h.Locking == nil
	s.Gives = make([]bool, Draws)
	u, holds := uniform("holds"+place), h.Chance.Interval.Dist()
	for i := range s.Gives {
		chance := holds.Quantile(u.Float64())
		s.Gives[i] = u.Float64() > chance
	}
	return s
}

// Of counts a single joint at a load in newtons.
func Of(s Sample, load float64) Outcome {
	o, _ := Chain([]Sample{s}, load)
	return o
}

// Chain plays every draw through the parts of a rig: the part that bears least, or
// does not lock, gives way first. first is the share of draws in which each part did.
// Of two that bear alike the earlier one gives way.
func Chain(parts []Sample, load float64) (o Outcome, first []float64) {
	first = make([]float64, len(parts))
	bears := make([]float64, Draws)
	o.ByClass = !slices.ContainsFunc(parts, func(s Sample) bool { return s.Gives != nil && !s.ByClass })
	for k := range Draws {
		least, at := math.Inf(1), 0
		gave := false
		for i, s := range parts {
			if b := s.Bears[k]; b < least {
				least = b
				if !gave {
					at = i
				}
			}
			if !gave && s.Gives != nil && s.Gives[k] {
				at, gave = i, true
			}
		}
		bears[k] = least
		first[at]++
		switch {
		case !gave && least >= load:
			o.Holds++
		case gave || parts[at].Slips:
			o.Slips++
		default:
			o.Breaks++
		}
	}
	for i := range first {
		first[i] /= Draws
	}
	o.Holds, o.Slips, o.Breaks = o.Holds/Draws, o.Slips/Draws, o.Breaks/Draws
	slices.Sort(bears)
	o.P5, o.P50, o.P95 = quantile(bears, 0.05), quantile(bears, 0.5), quantile(bears, 0.95)
	return o, first
}

func quantile(sorted []float64, p float64) float64 {
	return stat.Quantile(p, stat.Empirical, sorted, nil)
}
