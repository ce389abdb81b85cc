package bench

import (
	"math"
	"math/rand/v2"
)

// Act is what a simulated knot does as the load rises.
type Act struct {
	// BreaksKN is the load at which it parts.
	BreaksKN float64
	// SlipsKN is the load at which it begins to slip; 0: it does not.
	SlipsKN float64
	// Catches after so many slips and holds until it parts; 0: it runs out.
	Catches int
	// TailMM is the length that can run through before it is out.
	TailMM float64
}

// Simulated is a pull to be simulated: a specimen on a bench drawn out at one speed, and the
// cell that reads it.
type Simulated struct {
	Knots [2]Act
	// LineKN is the strength of the line away from knots, GripKN that of the grips; 0: they
	// do not fail.
	LineKN, GripKN float64
	// StretchAt is the stretch of the line, a share, at LineKN or else at 10 kN.
	StretchAt float64
	GaugeMM   float64
	// SpeedMMS draws it out; HertzS readings a second.
	SpeedMMS, Hertz float64
	// NoiseKN and DriftKNS are the cell's: the spread of a reading, and how its zero wanders.
	NoiseKN, DriftKNS, ZeroKN float64
	// RestS is how long it reads before and after the pull.
	RestS float64
}

// Where a pull failed.
type Where string

const (
	KnotA  Where = "a"
	KnotB  Where = "b"
	InA    Where = "in-a" // inside the knot, by its own squeeze
	InB    Where = "in-b"
	InLine Where = "line"
	AtGrip Where = "grip"
)

// Wheres lists them.
var Wheres = []Where{KnotA, KnotB, InA, InB, InLine, AtGrip}

// Truth is what happened in a simulated pull.
type Truth struct {
	Slips []Mark
	Break *Mark
	Where Where
	// OutS is when a knot had run out; 0 if none did.
	OutS float64
}

// Simulate draws a specimen out until something gives, and on for a moment. The line stretches
// the more stiffly the more it bears; a knot that slips lets line run in jerks, each of which
// lets the load fall. Our own model, for practice and tests: it is no evidence of any knot.
func Simulate(p Simulated, rnd *rand.Rand) (Trace, Truth) {
	full := p.LineKN
	if full == 0 {
		full = 10
	}
	const stiffens = 1.35
	load := func(mm float64) float64 {
		if mm <= 0 {
			return 0
		}
		return full * math.Pow(mm/p.GaugeMM/p.StretchAt, stiffens)
	}
	var tr Trace
	var truth Truth
	dt := 1 / p.Hertz
	read := func(s, kn float64) {
		kn += p.ZeroKN + p.DriftKNS*s + p.NoiseKN*rnd.NormFloat64()
		tr.S = append(tr.S, math.Round(s*1e6)/1e6)
		tr.KN = append(tr.KN, math.Round(kn*1e4)/1e4)
	}
	s, drawn, let := 0.0, 0.0, 0.0
	for ; s < p.RestS; s += dt {
		read(s, 0)
	}
	type state struct {
		slips     int
		run       float64 // line that has run through, mm
		at        float64 // load of the next slip
		jerk      float64 // mm still to run in this jerk
		perSecond float64
	}
	var k [2]state
	for i, a := range p.Knots {
		k[i].at = a.SlipsKN
	}
	over := math.Inf(1)
	for kn := 0.0; s < over; s += dt {
		if math.IsInf(over, 1) {
			drawn += p.SpeedMMS * dt
			for i := range k {
				if k[i].jerk > 0 {
					mm := min(k[i].jerk, k[i].perSecond*dt)
					k[i].jerk -= mm
					k[i].run += mm
					let += mm
				}
			}
			kn = load(drawn - let)
			for i, a := range p.Knots {
				if a.SlipsKN > 0 && k[i].jerk == 0 && kn >= k[i].at && (a.Catches == 0 || k[i].slips < a.Catches) {
					k[i].slips++
					truth.Slips = append(truth.Slips, Mark{s, kn})
					// A jerk lets 4 to 12 % of the load go.
					stretch := drawn - let
					k[i].jerk = stretch * (1 - math.Pow(1-(0.04+0.08*rnd.Float64()), 1/stiffens))
					k[i].perSecond = k[i].jerk/(0.01+0.03*rnd.Float64()) + p.SpeedMMS
					k[i].at = a.SlipsKN * (0.97 + 0.08*rnd.Float64())
				}
				if a.TailMM > 0 && k[i].run >= a.TailMM && truth.OutS == 0 {
					truth.OutS = s
					truth.Where = [2]Where{KnotA, KnotB}[i]
					over = s + 1 + p.RestS
				}
			}
			for _, w := range []struct {
				kn    float64
				where Where
			}{{p.Knots[0].BreaksKN, KnotA}, {p.Knots[1].BreaksKN, KnotB}, {p.LineKN, InLine}, {p.GripKN, AtGrip}} {
				if w.kn > 0 && kn >= w.kn && math.IsInf(over, 1) {
					truth.Break, truth.Where = &Mark{s, kn}, w.where
					over = s + p.RestS + 0.5
				}
			}
			read(s, kn)
			continue
		}
		// Parted, it falls at once; run out, it falls as the tail draws through.
		gone := 0.004
		if truth.Break == nil {
			gone = 0.35
		}
		kn *= math.Exp(-dt / gone)
		read(s, kn)
		if s > 3600 {
			break
		}
	}
	return tr, truth
}
