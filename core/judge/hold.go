package judge

import (
	"math"

	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Hold of a joint, dry or wet.
type Hold struct {
	Class knot.Class
	Tag   evidence.Tag
	// Value is how well it holds, 0 to 1, for the score.
	Value float64
	// FromUse is what is known from use, where no friction model decides.
	FromUse *knot.HoldClass
	// Locking is what the friction model says, where one decides.
	Locking *Locking
	// Shaken: the load takes a class off it.
	Shaken bool
}

// Locking is a hitch held against the friction of its line.
type Locking struct {
	// Critical is the least friction on smooth metal at which it locks by itself; +Inf
	// for what never does.
	Critical float64
	Mu       evidence.Figure
	// Chance that it locks.
	Chance float64
	// Hand is the force with which the end must be held at the lowest friction
	// expected; 0 where it locks, +Inf where no hand can hold it.
	Hand unit.Force
}

// holds judges the hold dry and wet.
func holds(r *rig.Rig, k *knot.Knot) (dry, wet Hold) {
	if k.FrictionModel == "" {
		h := k.HoldIn(r.Line.Material.ID)
		if r.Other != nil && r.JoinsTwo() {
			// The more slippery of two lines decides.
			if o := k.HoldIn(r.Other.Material.ID); o.Wet.Rank()+o.Dry.Rank() > h.Wet.Rank()+h.Dry.Rank() {
				h = o
			}
		}
		dry = Hold{Class: h.Dry, Tag: h.Tag, FromUse: &h, Value: classValue(h.Dry)}
		wet = Hold{Class: h.Wet, Tag: h.Tag, FromUse: &h, Value: classValue(h.Wet)}
	} else {
		h, g, m := Friction(r, k)
		critical := h.CriticalMu(g, m)
		dry = locking(r, h, g, m, critical, false)
		wet = locking(r, h, g, m, critical, true)
	}
	return shaken(r, k, dry), shaken(r, k, wet)
}

// Friction gives the friction model of a knot that has one, its geometry in this
// joint, and how both coefficients follow from the line's friction on smooth metal.
func Friction(r *rig.Rig, k *knot.Knot) (friction.Hitch, friction.Geometry, friction.Mu) {
	h, _ := friction.Find(k.FrictionModel, k.FrictionCount) // knot.Check has seen that it exists
	g := friction.Geometry{Rope: float64(r.Line.Diameter) / 2}
	m := friction.Mu{Rope: 1, Object: 1}
	switch {
	case r.Fitting != nil:
		g.Object = float64(r.Fitting.Size) / 2
		m.Object = r.Fitting.Factor.Likely
	case r.Other != nil:
		g.Object = float64(r.Other.Diameter) / 2
	}
	return h, g, m
}

func locking(r *rig.Rig, h friction.Hitch, g friction.Geometry, m friction.Mu, critical float64, wet bool) Hold {
	mu := r.Line.Mu(wet)
	l := &Locking{Critical: critical, Mu: mu, Chance: mu.Dist().Survival(critical), Hand: unit.Force(math.Inf(1))}
	switch ratio := h.HoldRatio(g, m.Scale(mu.Low)); {
	case math.IsInf(ratio, 1):
		l.Hand = 0
	case ratio > 0:
		l.Hand = unit.Force(float64(r.Load) / ratio)
	}
	out := Hold{Tag: evidence.Computed, Locking: l, Value: l.Chance}
	switch {
	case mu.Low >= critical:
		out.Class = knot.Holds
	case mu.High < critical:
		out.Class = knot.Slips
	default:
		out.Class = knot.Marginal
	}
	return out
}

// shaken takes a class off where the load shakes a knot that does not like it.
func shaken(r *rig.Rig, k *knot.Knot, h Hold) Hold {
	worse := false
	switch r.Character {
	case rig.Alternating:
		worse = k.Shake.Class == knot.Slips
	case rig.Flogging, rig.Snatch:
		worse = k.Shake.Class != knot.Holds
	}
	if !worse || h.Class == knot.Slips {
		return h
	}
	h.Shaken = true
	h.Value *= 0.5
	// A shaken knot is watched, not forbidden: it goes no lower than marginal,
	// unless flogging meets a knot that works loose by itself.
	if h.Class == knot.Holds || k.Shake.Class == knot.Slips && r.Character != rig.Alternating {
		h.Class = h.Class.Worse()
	}
	return h
}

// classValue is how well a class holds, for the score. Our own rule, no source.
func classValue(c knot.Class) float64 {
	return map[knot.Class]float64{knot.Holds: 0.95, knot.Marginal: 0.5, knot.Slips: 0.05}[c]
}
