package judge

import (
	"math"

	"oarweed/core/evidence"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Verdict is one knot judged in one joint.
type Verdict struct {
	Rig  *rig.Rig
	Knot *knot.Knot
	Size Size
	// Dry and Wet are the hold either way; see [Verdict.Now].
	Dry, Wet Hold
	Strength Strength
	// Against holds every limit that the knot violates here; none if it will do.
	Against []Reason
	// OtherWork: the knot is made for another task or another thing. Nothing but
	// Against is worked out for it then, unless asked for by [Whatever].
	OtherWork bool
}

// Size of a knot in a joint.
type Size struct {
	// Ratio is thick ÷ thin of two lines joined, or object line ÷ helper; 0 for one line.
	Ratio float64
	// Needs is the line to tie with, tail included; Tail is the end that stays.
	Needs, Tail unit.Length
	// Wraps of a wrapped knot, and how many fewer than the line asks for; else 0.
	Wraps, Short int
}

// Now is the hold that counts, wet or dry.
func (v Verdict) Now() Hold {
	if v.Rig.Wet {
		return v.Wet
	}
	return v.Dry
}

// Will reports whether the knot will do.
func (v Verdict) Will() bool { return len(v.Against) == 0 }

// Judge judges a knot in a joint. A knot made for other work is only told so.
func Judge(r *rig.Rig, k *knot.Knot) Verdict {
	if other := otherWork(r, k); other != nil {
		return Verdict{Rig: r, Knot: k, Against: other, OtherWork: true}
	}
	v := Whatever(r, k)
	v.Against = v.limits()
	return v
}

// Whatever judges a knot that somebody has chosen, whatever it is made for: size,
// hold and strength are worked out even if it is made for other work.
func Whatever(r *rig.Rig, k *knot.Knot) Verdict {
	v := Verdict{Rig: r, Knot: k, Size: sizeOf(r, k)}
	v.Dry, v.Wet = holds(r, k)
	v.Strength = strengthOf(r, k, v.Size.Short)
	if other := otherWork(r, k); other != nil {
		v.Against, v.OtherWork = other, true
	} else {
		v.Against = v.limits()
	}
	return v
}

func sizeOf(r *rig.Rig, k *knot.Knot) Size {
	var s Size
	d := r.Line.Diameter
	round := 0.0
	switch {
	case r.Fitting != nil:
		round = math.Pi * float64(r.Fitting.Size+d)
	case r.Other != nil:
		s.Ratio = float64(r.Other.Diameter / d)
		if r.JoinsTwo() && s.Ratio < 1 {
			s.Ratio = 1 / s.Ratio
		}
		round = math.Pi * float64(r.Other.Diameter+d)
	}
	s.Tail = d * unit.Length(k.Tail.Low)
	s.Needs = d*unit.Length(k.Uses.Diameters) + unit.Length(k.Uses.Turns*round) + s.Tail + 2*r.Distance
	if k.Wraps != nil {
		s.Wraps = k.Wraps.For(unit.Force(r.Capacity.Likely).LbTest())
		if r.Wraps > 0 {
			s.Short = max(0, s.Wraps-r.Wraps)
			s.Wraps = r.Wraps
		}
	}
	return s
}

// Strength of a joint.
type Strength struct {
	// Capacity is what it bears, in newtons; Share what the knot keeps of the line.
	Capacity evidence.Figure
	Share    evidence.Figure
	// Slips: at its limit it slips rather than breaks.
	Slips bool
	// Margin is likely capacity ÷ (load × design factor), Times capacity ÷ load.
	Margin, Times float64
	Enough        Enough
}

// Enough says how the capacity stands to what is asked for.
type Enough int

const (
	Ample Enough = iota // the design factor is met
	Under               // it is not, but even the low end bears twice the load
	Thin                // nor that
)

func strengthOf(r *rig.Rig, k *knot.Knot, short int) Strength {
	e := k.EfficiencyIn(r.Line.Material.ID)
	if r.Other != nil && r.JoinsTwo() {
		if o := k.EfficiencyIn(r.Other.Material.ID); o.Value.Likely < e.Value.Likely {
			e = o
		}
	}
	share := e.Figure()
	if short > 0 {
		loss := k.Wraps.Loss
		n := float64(short)
		share.Interval = evidence.Interval{
			Low:    share.Low * math.Pow(1-loss.High, n),
			Likely: share.Likely * math.Pow(1-loss.Likely, n),
			High:   share.High * math.Pow(1-loss.Low, n),
		}
	}
	capacity := r.Capacity.Times(share.Interval)
	load := float64(r.Load)
	s := Strength{
		Capacity: evidence.Figure{Interval: capacity, Unit: evidence.Newton, Tag: evidence.Computed,
			Source: "strength of the line (" + string(r.Capacity.Tag) + ") × share kept by the knot (" + string(share.Tag) + ")"},
		Share: share, Slips: e.Fails == "slips",
		Margin: capacity.Likely / (load * r.DesignFactor),
		Times:  capacity.Likely / load,
	}
	switch {
	case s.Margin >= 1:
		s.Enough = Ample
	case capacity.Low >= twiceTheLoad*load:
		s.Enough = Under
	default:
		s.Enough = Thin
	}
	return s
}

// twiceTheLoad is what even the low end of the capacity must bear for a joint short
// of its design factor to be called no worse than that. Our own rule, no source.
const twiceTheLoad = 2
