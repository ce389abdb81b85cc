// Package rank puts the knots of a catalogue in order for one joint.
//
// Every knot ends up in one of two lists, never in neither: out, with each limit it
// violates; or ranked by a score of 0 to 100, the sum of visible contributions
// weight × value. The weights are data. Values run from 0 to 1:
//
//   - fit: how well the knot suits the task, from the catalogue;
//   - strength: m/(1+m), m = capacity ÷ (load × design factor);
//   - hold: for hitches with a friction model the chance that it locks; otherwise by
//     class: holds 0.95, marginal 0.5;
//   - release, time 15/(15+s), ease, inspection, line used 1/(1+metres).
package rank

import (
	"math"
	"slices"

	"oarweed/core/judge"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/trade"
)

// Criterion of the score.
type Criterion int

const (
	Fit Criterion = iota
	Strength
	Hold
	Release
	Time
	Ease
	Inspect
	Line
	criteria
)

// Contribution of one criterion to the score: weight × value.
type Contribution struct {
	Criterion     Criterion
	Weight, Value float64
}

// Points that it gives.
func (c Contribution) Points() float64 { return c.Weight * c.Value }

// Ranked is a knot that can do the job.
type Ranked struct {
	judge.Verdict
	Score         float64
	Contributions [criteria]Contribution
}

// Order is the whole catalogue, judged for a joint.
type Order struct {
	Rig *rig.Rig
	// Ranked holds what will do, best first; Out what will not, the knots best made
	// for the task first: their reasons teach most.
	Ranked []Ranked
	Out    []judge.Verdict
}

// Joint ranks the catalogue for a checked rig.
func Joint(c *trade.Catalogue, r *rig.Rig) Order {
	o := Order{Rig: r}
	weights := c.Weights[r.Weights]
	for _, k := range c.Knots {
		if v := judge.Judge(r, k); v.Will() {
			o.Ranked = append(o.Ranked, Score(v, weights))
		} else {
			o.Out = append(o.Out, v)
		}
	}
	slices.SortStableFunc(o.Ranked, func(a, b Ranked) int { return descending(a.Score, b.Score) })
	slices.SortStableFunc(o.Out, func(a, b judge.Verdict) int {
		if a.OtherWork != b.OtherWork {
			if b.OtherWork {
				return -1
			}
			return 1
		}
		return descending(a.Knot.Tasks[r.Task.ID].Fit, b.Knot.Tasks[r.Task.ID].Fit)
	})
	return o
}

// First is the id of the knot that comes first, "" if none will do: [Joint] without
// keeping what it does not need.
func First(c *trade.Catalogue, r *rig.Rig) string {
	best, id := math.Inf(-1), ""
	weights := c.Weights[r.Weights]
	for _, k := range c.Knots {
		if v := judge.Judge(r, k); v.Will() {
			if s := Score(v, weights).Score; s > best {
				best, id = s, k.ID
			}
		}
	}
	return id
}

func descending(a, b float64) int {
	switch {
	case a > b:
		return -1
	case a < b:
		return 1
	}
	return 0
}

// Score weighs a verdict.
func Score(v judge.Verdict, w rig.Weights) Ranked {
	k, r := v.Knot, v.Rig
	out := Ranked{Verdict: v, Contributions: [criteria]Contribution{
		{Fit, w.Fit, k.Tasks[r.Task.ID].Fit},
		{Strength, w.Strength, v.Strength.Margin / (1 + v.Strength.Margin)},
		{Hold, w.Hold, v.Now().Value},
		{Release, w.Release, releaseValue(k)},
		{Time, w.Time, timeValue(k, r.Seconds)},
		{Ease, w.Ease, float64(6-k.Difficulty) / 5},
		{Inspect, w.Inspect, float64(k.Inspect) / 5},
		{Line, w.Line, 1 / (1 + v.Size.Needs.M())},
	}}
	for _, c := range out.Contributions {
		out.Score += c.Points()
	}
	return out
}

// timeValue falls with the time it takes; where the user says how long there is,
// any knot that fits into it is as good as another.
func timeValue(k *knot.Knot, has float64) float64 {
	likely := k.Seconds.Likely
	if has > 0 {
		return math.Min(1, has/likely)
	}
	return 15 / (15 + likely)
}

func releaseValue(k *knot.Knot) float64 {
	if k.Release.UnderLoad {
		return 1
	}
	return map[knot.Off]float64{knot.Easy: 0.9, knot.Worked: 0.6, knot.Jams: 0.3, knot.Cut: 0.3}[k.Release.Slack]
}
