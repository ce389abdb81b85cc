package judge

import (
	"oarweed/core/evidence"
	"oarweed/core/friction"
	"oarweed/core/hold"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/unit"
)

// Hold of a joint, dry or wet.
type Hold struct {
	Class knot.Class
	// Chance that it holds this load: one scale for every knot, whether a friction model
	// gives it or a class known from use. Never quite 0 or 1.
	Chance evidence.Figure
	// FromUse is what is known from use, where no friction model decides.
	FromUse *knot.HoldClass
	// Locking is what the friction model says, where one decides.
	Locking *Locking
	// Shaken: the load takes a part of its chance.
	Shaken bool
}

// Locking is a hitch held against the friction of its line.
type Locking struct {
	// Locks is the chance that it holds any load, with no hand on the end.
	Locks float64
	// Mu is the friction of the line on smooth metal, before use has taught anything.
	Mu evidence.Figure
	// Hand is the force with which the end must be held so that 5, 50 and 95 of 100
	// draws hold: 0 where they need none, +Inf where no hand can.
	Hand evidence.Interval
}

// Classes of use as chances that a knot holds. Our own reading of the words: common
// practice gives no number, and nothing is certain.
var chanceOf = map[knot.Class]evidence.Interval{
	knot.Holds:    {Low: 0.94, Likely: 0.98, High: 0.995},
	knot.Marginal: {Low: 0.6, Likely: 0.8, High: 0.92},
	knot.Slips:    {Low: 0.02, Likely: 0.15, High: 0.4},
}

// ClassChance is the chance that a class of use stands for.
func ClassChance(c knot.Class) evidence.Interval { return chanceOf[c] }

const (
	// holdsFrom and marginalFrom are the likely chances from which a hitch holds, or is
	// marginal. Our own rule.
	holdsFrom    = 0.9
	marginalFrom = 0.5
	// surest is the highest chance that is ever given, and one less it the lowest.
	surest = 0.995
)

// ClassOf is the class that a likely chance comes to.
func ClassOf(likely float64) knot.Class {
	switch {
	case likely >= holdsFrom:
		return knot.Holds
	case likely >= marginalFrom:
		return knot.Marginal
	}
	return knot.Slips
}

// holds judges the hold dry and wet.
func holds(r *rig.Rig, k *knot.Knot) (dry, wet Hold) {
	if k.FrictionModel == "" {
		h := k.HoldIn(r.Line.Material.ID, r.Task.ID)
		if r.Other != nil && r.JoinsTwo() {
			// The more slippery of two lines decides.
			if o := k.HoldIn(r.Other.Material.ID, r.Task.ID); o.Wet.Rank()+o.Dry.Rank() > h.Wet.Rank()+h.Dry.Rank() {
				h = o
			}
		}
		dry, wet = fromUse(h, h.Dry), fromUse(h, h.Wet)
	} else {
		dry, wet = locking(r, k, false), locking(r, k, true)
	}
	return shaken(r, k, dry), shaken(r, k, wet)
}

func fromUse(h knot.HoldClass, c knot.Class) Hold {
	return Hold{Class: c, FromUse: &h, Chance: evidence.Figure{Interval: chanceOf[c], Tag: h.Tag, Source: "by use, not worked out: " + h.Why}}
}

// Question of a hitch in the joint of a rig.
func Question(r *rig.Rig, hitch string, count int, wet bool) hold.Question {
	q := hold.Question{Hitch: hitch, Count: count, Line: r.Line, Wet: wet, Load: r.Load}
	switch {
	case r.Fitting != nil:
		q.Object, q.Surface = r.Fitting.Size, r.Fitting.Surface
	case r.Other != nil:
		q.Object = r.Other.Diameter
	}
	return q
}

// Critical is the least friction on smooth metal, rope on rope alike, at which a hitch
// with a friction model locks in a joint; +Inf for what never does.
func Critical(r *rig.Rig, k *knot.Knot) float64 {
	h, _ := friction.Find(k.FrictionModel, k.FrictionCount) // knot.Check has seen that it exists
	g, m := friction.Geometry{Rope: float64(r.Line.Diameter) / 2}, friction.Mu{Rope: 1, Object: 1}
	switch {
	case r.Fitting != nil:
		g.Object, m.Object = float64(r.Fitting.Size)/2, r.Fitting.Factor.Likely
	case r.Other != nil:
		g.Object = float64(r.Other.Diameter) / 2
	}
	return h.CriticalMu(g, m)
}

func locking(r *rig.Rig, k *knot.Knot, wet bool) Hold {
	q := Question(r, k.FrictionModel, k.FrictionCount, wet)
	if k.HeldByHand {
		q.ByHand = LightHand
	}
	a := r.Use.Ask(q)
	for _, p := range []*float64{&a.Chance.Low, &a.Chance.Likely, &a.Chance.High} {
		*p = min(max(*p, 1-surest), surest)
	}
	return Hold{Class: ClassOf(a.Chance.Likely), Locking: &Locking{a.Locks, r.Line.Mu(wet), a.Hand},
		Chance: evidence.Figure{Interval: a.Chance, Tag: evidence.Computed, Source: "friction of rope on object and rope on rope, taught by use"}}
}

// shakenLeaves is the share of its chance that a load which works at a knot leaves it:
// one that shakes loose, one that may. Our own rule, no source.
var shakenLeaves = map[knot.Class]float64{knot.Slips: 0.55, knot.Marginal: 0.85}

// works reports whether the load works at the knot, which does not like it.
func works(r *rig.Rig, k *knot.Knot) bool {
	switch r.Character {
	case rig.Alternating:
		return k.Shake.Class == knot.Slips && !r.Task.Watched
	case rig.Flogging, rig.Snatch:
		return k.Shake.Class != knot.Holds
	}
	return false
}

// shaken takes a part of its chance off a knot that the load works at. By that alone it
// goes no lower than marginal: a shaken knot is ruled out by its own limit, not by a
// chance ([ShakesOut]).
func shaken(r *rig.Rig, k *knot.Knot, h Hold) Hold {
	if !works(r, k) || h.Class == knot.Slips {
		return h
	}
	h.Shaken = true
	h.Chance.Interval = h.Chance.Scale(shakenLeaves[k.Shake.Class])
	h.Class = knot.Marginal
	return h
}

// LettingGo is what the hand has to hold once the rest of a knot that is cast off under
// load is off and only its turns are left.
type LettingGo struct {
	Left *knot.Left
	Hand evidence.Figure // N; +Inf where no hand can
}

// lettingGo is nil for a knot that is not cast off under load.
func lettingGo(r *rig.Rig, k *knot.Knot) *LettingGo {
	left := k.Release.Left
	if left == nil || r.Fitting == nil {
		return nil
	}
	a := r.Use.Ask(Question(r, left.Hitch, left.Count, r.Wet))
	return &LettingGo{left, evidence.Figure{Interval: a.Hand, Unit: evidence.Newton, Tag: evidence.Computed, Source: "load ÷ e^(angle × friction) of the turns that are left"}}
}

// LightHand is what a hand holds on an end without effort. From memory.
const LightHand = 80 * unit.Newton

// OneHand is the force beyond which an end is not held by one hand. From memory.
const OneHand = 200 * unit.Newton
