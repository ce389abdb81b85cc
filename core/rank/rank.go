// Package rank puts the knots of a catalogue in order for one joint.
//
// Every knot ends up in one of two lists, never in neither: out, with each limit it
// violates; or ranked. What stands above what is decided in this order:
//
//  1. a knot against which nothing speaks stands above one against which something does
//     ([judge.Verdict.But]): a doubtful hold, a load that works at it, too little left;
//
//  2. a knot made for the task (fit from [Made]) stands above one that can be pressed
//     into it, except where people depend on it: there only security counts;
//
//  3. the score of 0 to 100, the sum of visible contributions weight × value. The weights
//     are data. Values run from 0 to 1:
//
//     - fit: how well the knot suits the task, from the catalogue;
//     - strength: m/(1+m), m = capacity at its worst ÷ twice the load;
//     - hold: the likely chance that it holds;
//     - release, time 15/(15+s), ease, inspection, line used 1/(1+metres).
//
// Where nothing will do there is a nearest: the knot made for the task that lacks least.
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
	// Nearest of what will not do lacks least; nil where something will do, or where no
	// knot is made for the task at all.
	Nearest *judge.Verdict
}

// Made is the fit from which a knot counts as made for a task.
const Made = 0.7

// Joint ranks the catalogue for a checked rig.
func Joint(c *trade.Catalogue, r *rig.Rig) Order {
	// Verdicts are large and there are as many as knots: room for all of them at once.
	o := Order{Rig: r, Ranked: make([]Ranked, 0, 8), Out: make([]judge.Verdict, 0, len(c.Knots))}
	weights := weightsOf(c, r)
	other := make([]judge.Verdict, 0, len(c.Knots)) // made for other work
	for _, k := range c.Knots {
		switch v := judge.Judge(r, k, c.BackupOf(r, k)); {
		case v.Will():
			o.Ranked = append(o.Ranked, Score(v, weights))
		case !v.OtherWork:
			o.Out = append(o.Out, v)
		default:
			other = append(other, v)
		}
	}
	slices.SortStableFunc(o.Ranked, func(a, b Ranked) int {
		if d := a.tier() - b.tier(); d != 0 {
			return d
		}
		return descending(a.Score, b.Score)
	})
	slices.SortStableFunc(o.Out, func(a, b judge.Verdict) int { return descending(a.Fit, b.Fit) })
	for _, elsewhere := range []bool{true, false} { // this task on another thing; other tasks
		for i := range other {
			if (other[i].Against[0].Gate() == judge.ObjectGate) == elsewhere {
				o.Out = append(o.Out, other[i])
			}
		}
	}
	if len(o.Ranked) == 0 {
		o.Nearest = nearest(o.Out)
	}
	return o
}

// tier is lower for what stands above whatever the score says.
func (x *Ranked) tier() int {
	t := 0
	if len(x.But) > 0 {
		t += 2
	}
	if x.Fit < Made && x.Rig.Consequence != rig.Person {
		t++
	}
	return t
}

// nearest is the knot made for the task that violates least: fewest limits first, then
// the one whose worst limit is missed by the least factor.
func nearest(out []judge.Verdict) *judge.Verdict {
	var best *judge.Verdict
	for i := range out {
		v := &out[i]
		if v.OtherWork || v.Fit < judge.LeastFit {
			continue
		}
		if best == nil || less(*v, *best) {
			best = v
		}
	}
	return best
}

func less(a, b judge.Verdict) bool {
	if len(a.Against) != len(b.Against) {
		return len(a.Against) < len(b.Against)
	}
	worst := func(v judge.Verdict) (w float64) {
		for _, r := range v.Against {
			w = math.Max(w, judge.Missing(r))
		}
		return w
	}
	return worst(a)/a.Fit < worst(b)/b.Fit
}

// First is the id of the knot that comes first, "" if none will do: [Joint] without
// keeping what it does not need.
func First(c *trade.Catalogue, r *rig.Rig) string {
	best, tier, id := math.Inf(-1), math.MaxInt, ""
	weights := weightsOf(c, r)
	for _, k := range c.Knots {
		if v := judge.Judge(r, k, c.BackupOf(r, k)); v.Will() {
			x := Score(v, weights)
			if t := x.tier(); t < tier || t == tier && x.Score > best {
				best, tier, id = x.Score, t, k.ID
			}
		}
	}
	return id
}

// Decided says what put one ranked knot above another: something that speaks against the
// other, that only the first is made for the task, or the criterion that gave it most
// more.
type Decided struct {
	But       judge.Reason // of the other; nil
	Made      bool
	Criterion Criterion
}

// Above says why a stands above b.
func Above(a, b *Ranked) Decided {
	switch {
	case len(a.But) == 0 && len(b.But) > 0:
		return Decided{But: b.But[0]}
	case a.tier() < b.tier():
		return Decided{Made: true}
	}
	d := Decided{}
	most := math.Inf(-1)
	for i := range a.Contributions {
		if more := a.Contributions[i].Points() - b.Contributions[i].Points(); more > most {
			most, d.Criterion = more, Criterion(i)
		}
	}
	return d
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
		{Fit, w.Fit, v.Fit},
		{Strength, w.Strength, v.Strength.Margin / (1 + v.Strength.Margin)},
		{Hold, w.Hold, v.Now().Chance.Likely},
		{Release, w.Release, releaseValue(r, k)},
		{Time, w.Time, timeValue(v.Size.Seconds.Likely, r.Seconds)},
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
func timeValue(likely, has float64) float64 {
	if has > 0 {
		return math.Min(1, has/likely)
	}
	return 15 / (15 + likely)
}

// weightsOf gives the weights of a joint: for an hour what is tied and undone fast counts
// more at the cost of hold, for months the other way round. People's are left alone.
func weightsOf(c *trade.Catalogue, r *rig.Rig) rig.Weights {
	w := c.Weights[r.Weights]
	if r.Consequence == rig.Person || r.Stay == rig.Night || r.Stay == "" {
		return w
	}
	if r.Stay == rig.Hour {
		moved := w.Hold / 2
		w.Hold, w.Release, w.Time = w.Hold-moved, w.Release+moved*2/3, w.Time+moved/3
		return w
	}
	moved := (w.Release + w.Time) * 2 / 3
	w.Release, w.Time, w.Hold = w.Release/3, w.Time/3, w.Hold+moved
	return w
}

func releaseValue(r *rig.Rig, k *knot.Knot) float64 {
	if r.Release == rig.Stays { // the less it comes off, the better
		if k.Release.UnderLoad {
			return 0
		}
		return map[knot.Off]float64{knot.Easy: 0.7, knot.Worked: 0.9, knot.Jams: 1, knot.Cut: 1}[k.Release.Slack]
	}
	if k.Release.UnderLoad {
		return 1
	}
	return map[knot.Off]float64{knot.Easy: 0.9, knot.Worked: 0.6, knot.Jams: 0.3, knot.Cut: 0.3}[k.Release.Slack]
}
