package practice

import (
	"fmt"
	"math"
	"time"

	"oarweed/core/problem"
)

// Grade of a try, as spaced repetition counts it.
type Grade int

const (
	Again Grade = 1 // forgotten
	Hard  Grade = 2
	Good  Grade = 3
	Easy  Grade = 4
)

// State of what is remembered.
type State string

const (
	New        State = "new"
	Learning   State = "learning"
	Review     State = "review"
	Relearning State = "relearning"
)

// Memory is how well one learner remembers one knot, by the free spaced-repetition
// scheduler FSRS, version 6 (open-spaced-repetition; formulas in its wiki, "The
// Algorithm"), with its published default weights, learning steps of 1 and 10 minutes,
// a relearning step of 10 minutes, no fuzz. The zero value has never been tried.
//
// The test holds it against the project's own TypeScript package, 5.4.2. Its weights come
// from cards reviewed on a screen, not from knots: see docs/method.
type Memory struct {
	State State `json:"state"`
	// Stability is the time in days after which recall has fallen to 9 in 10; Difficulty
	// runs from 1 to 10.
	Stability  float64 `json:"stability"`
	Difficulty float64 `json:"difficulty"`
	// Due is when it should be tried again; the zero time for what never was.
	Due time.Time `json:"due,omitzero"`
	// Last is when it was tried last, Step how far it has come in the learning steps.
	Last time.Time `json:"-"`
	Step int       `json:"-"`
}

// Retention is the share of tries that should succeed when they fall due, unless another
// is asked for.
const Retention = 0.9

// w are the default weights of FSRS-6.
var w = [21]float64{
	0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796,
	1.4835, 0.0614, 0.2629, 1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542,
}

const (
	leastStability = 0.001
	mostDays       = 36500
	day            = 24 * time.Hour
)

var (
	decay  = -w[20]
	factor = round8(math.Exp(math.Log(0.9)/decay) - 1)
)

// Learning steps in minutes.
var steps = map[State][]float64{New: {1, 10}, Learning: {1, 10}, Review: {10}, Relearning: {10}}

// round8 rounds to eight decimals, halves up, as the reference does.
func round8(x float64) float64 { return math.Floor(x*1e8+0.5) / 1e8 }

func within(x, low, high float64) float64 { return math.Min(math.Max(x, low), high) }

// Recall is the chance that it is remembered at a time: 1 when just tried.
func (m Memory) Recall(at time.Time) float64 {
	if m.State == "" || m.State == New || m.Stability == 0 {
		return 0
	}
	return recall(daysBetween(m.Last, at), m.Stability)
}

func recall(days, stability float64) float64 {
	return round8(math.Pow(1+factor*days/stability, decay))
}

// daysBetween counts calendar days, UTC.
func daysBetween(a, b time.Time) float64 {
	midnight := func(t time.Time) time.Time { return t.UTC().Truncate(day) }
	return math.Floor(float64(midnight(b).Sub(midnight(a)) / day))
}

// Review is the memory after a try. The error says that the grade is none, or that the
// time lies before the last try.
func (m Memory) Review(at time.Time, g Grade, retention float64) (Memory, error) {
	if g < Again || g > Easy {
		return m, problem.New("grade", fmt.Sprintf("%d is not a grade", g), "give 1 (again), 2 (hard), 3 (good) or 4 (easy)")
	}
	if !(retention > 0 && retention <= 1) {
		return m, problem.New("retention", fmt.Sprintf("%g is not a share", retention), "give more than 0 and at most 1")
	}
	if m.State == "" {
		m.State = New
	}
	at = at.UTC().Truncate(time.Millisecond)
	days := 0.0
	if m.State != New {
		if days = daysBetween(m.Last, at); days < 0 {
			return m, problem.New("at", "lies before the try that comes first", "give the tries in the order in which they were made")
		}
	}
	next := m
	next.Last = at
	next.Difficulty, next.Stability = m.after(days, g)
	interval := func(stability float64) float64 {
		modifier := round8((math.Pow(retention, 1/decay) - 1) / factor)
		return within(math.Floor(stability*modifier+0.5), 1, mostDays)
	}
	if m.State == Review && g != Again {
		// Hard, good and easy follow each other by a day at least.
		of := func(g Grade) float64 { _, s := m.after(days, g); return interval(s) }
		hard, good := of(Hard), of(Good)
		hard = math.Min(hard, good)
		good = math.Max(good, hard+1)
		ivl := map[Grade]float64{Hard: hard, Good: good, Easy: math.Max(of(Easy), good+1)}[g]
		next.Step, next.Due = 0, at.Add(time.Duration(ivl)*day)
		return next, nil
	}
	minutes, step := stepFor(m.State, m.Step, g)
	if minutes > 0 {
		next.Step, next.Due = step, at.Add(time.Duration(minutes)*time.Minute)
		switch m.State {
		case New:
			next.State = Learning
		case Review:
			next.State = Relearning
		}
		return next, nil
	}
	next.State, next.Step = Review, 0
	next.Due = at.Add(time.Duration(interval(next.Stability)) * day)
	return next, nil
}

// stepFor is the learning step after a grade: minutes to wait, 0 for none.
func stepFor(s State, at int, g Grade) (minutes float64, step int) {
	list := steps[s]
	if at >= len(list) {
		return 0, 0
	}
	switch {
	case g == Again:
		return list[0], 0
	case s == Review:
		return 0, 0
	case g == Hard && len(list) == 1:
		return math.Floor(list[0]*1.5 + 0.5), at
	case g == Hard:
		return math.Floor((list[0]+list[1])/2 + 0.5), at
	case g == Good && at+1 < len(list):
		return list[at+1], at + 1
	}
	return 0, 0
}

// after gives difficulty and stability after a grade so many days on.
func (m Memory) after(days float64, g Grade) (difficulty, stability float64) {
	first := func(g Grade) float64 { return round8(w[4] - math.Exp(float64(g-1)*w[5]) + 1) }
	if m.State == New || m.Stability == 0 {
		return within(first(g), 1, 10), math.Max(w[g-1], 0.1)
	}
	d, s := m.Difficulty, m.Stability
	switch r := recall(days, s); {
	case days == 0:
		up := math.Pow(s, -w[19]) * math.Exp(w[17]*(float64(g)-3+w[18]))
		if g >= Hard {
			up = math.Max(up, 1)
		}
		stability = round8(within(s*up, leastStability, mostDays))
	case g == Again:
		forgotten := round8(within(w[11]*math.Pow(d, -w[12])*(math.Pow(s+1, w[13])-1)*math.Exp((1-r)*w[14]), leastStability, mostDays))
		stability = within(round8(s/math.Exp(w[17]*w[18])), leastStability, forgotten)
	default:
		by := map[Grade]float64{Hard: w[15], Good: 1, Easy: w[16]}[g]
		stability = round8(within(s*(1+math.Exp(w[8])*(11-d)*math.Pow(s, -w[9])*(math.Exp((1-r)*w[10])-1)*by), leastStability, mostDays))
	}
	damped := d + round8(-w[6]*float64(g-3)*(10-d)/9)
	return within(round8(w[7]*first(Easy)+(1-w[7])*damped), 1, 10), stability
}

// Tried is one try in a history.
type Tried struct {
	At    time.Time `json:"at"`
	Grade Grade     `json:"grade"`
}

// History is what somebody tried, in order, and the retention wanted; 0 is [Retention].
type History struct {
	Reviews   []Tried `json:"reviews"`
	Retention float64 `json:"retention,omitempty"`
}

// Memory is what the history leaves. The error names the review.
func (h History) Memory() (Memory, error) {
	m, retention := Memory{State: New}, h.Retention
	if retention == 0 {
		retention = Retention
	}
	if !(retention > 0 && retention <= 1) {
		return m, problem.New("retention", fmt.Sprintf("%g is not a share", retention), "give more than 0 and at most 1")
	}
	for i, r := range h.Reviews {
		if r.At.IsZero() {
			return m, problem.New(fmt.Sprintf("reviews[%d].at", i), "no time given", "write it like 2026-11-26T10:00:00Z")
		}
		next, err := m.Review(r.At, r.Grade, retention)
		if err != nil {
			return m, problem.At(fmt.Sprintf("reviews[%d]", i), err)
		}
		m = next
	}
	return m, nil
}
