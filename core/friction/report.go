package friction

import (
	"math"

	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Report is a friction answer as a document. Numbers that have no finite value
// are null: the critical friction of what never locks, the hold ratio of what
// does.
type Report struct {
	Hitch string `json:"hitch"`
	// MuCritical is the smallest friction at which it locks.
	MuCritical *float64 `json:"mu_critical"`
	Locks      bool     `json:"locks"`
	// HoldRatio is load ÷ tag force; 0 if no hand on the tag can hold it.
	HoldRatio *float64 `json:"hold_ratio"`
	// Eta is the pinch factor on the object at this friction.
	Eta float64 `json:"eta"`
	// TurnsToHold is the number of bare turns that let the hand hold the load,
	// where both were given.
	TurnsToHold *float64 `json:"turns_to_hold,omitempty"`
}

// WithHand adds how many bare turns let a hand force hold a load.
func (r Report) WithHand(load, hand unit.Force, mu float64) (Report, error) {
	var l problem.List
	if !(load > 0) {
		l.Add("load", "must be above zero", "give a force like 2.4kN")
	}
	if !(hand > 0) {
		l.Add("hand", "must be above zero", "give a force like 100N")
	}
	if err := l.Err(); err != nil {
		return r, err
	}
	r.TurnsToHold = finite(TurnsToHold(float64(load), float64(hand), mu))
	return r, nil
}

// HoldOf gives the report of a hitch with both coefficients equal to mu, or with
// the object's scaled by surface. n as in [Find].
func HoldOf(id string, n int, object, rope unit.Length, mu, surface float64) (Report, error) {
	var l problem.List
	h, err := Find(id, n)
	l.Take("", err)
	positive := func(field string, v float64, example string) {
		switch {
		case !(v > 0):
			l.Add(field, "must be above zero", "give "+example)
		case v > largest:
			l.Add(field, "is too large", "give "+example)
		}
	}
	positive("object", float64(object), "a diameter like 60mm")
	positive("line", float64(rope), "a diameter like 12mm")
	positive("mu", mu, "a coefficient like 0.15")
	positive("surface", surface, "a factor like 1")
	if mu > 3 {
		l.Add("mu", "no line grips like that", "give 0.02 to 1")
	}
	if err := l.Err(); err != nil {
		return Report{}, err
	}
	g := Geometry{Object: float64(object) / 2, Rope: float64(rope) / 2}
	shape := Mu{Rope: 1, Object: surface}
	r := Report{Hitch: id, Eta: Eta(g.Object, g.Rope, shape.Scale(mu))}
	r.MuCritical = finite(h.CriticalMu(g, shape))
	r.HoldRatio = finite(h.HoldRatio(g, shape.Scale(mu)))
	r.Locks = r.HoldRatio == nil
	return r, nil
}

// largest diameter or factor that is worked out: beyond it the sums overflow.
const largest = 1e3

func finite(v float64) *float64 {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return nil
	}
	return &v
}
