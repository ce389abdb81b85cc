package practice

import (
	"math"
	"slices"
	"strings"
	"time"

	"oarweed/core/knot"
)

// Level of a learner at a knot: each holds all below it.
type Level int

const (
	NotYet  Level = iota
	Helped        // with help
	Alone         // without
	InTime        // within the time of the class
	Wet           // wet, or in gloves
	InPlace       // on the real thing
)

// Target is the time in which a knot counts as tied in time: that of a practised hand,
// three times over. Our own rule.
func Target(k *knot.Knot) float64 { return math.Ceil(3 * k.Seconds.Likely) }

// Level that one attempt shows; NotYet for a fault, or where nothing was tied in rope.
func (a Attempt) Level(target float64) Level {
	switch {
	case a.Kind == Drill || a.Outcome == Fault:
		return NotYet
	case a.Help:
		return Helped
	case a.Outcome == Slow || a.Seconds > target && target > 0:
		return Alone
	case a.In("real"):
		return InPlace
	case a.In("wet") || a.In("gloves"):
		return Wet
	}
	return InTime
}

// In reports whether the attempt was made in that condition.
func (a Attempt) In(condition string) bool {
	return slices.Contains(strings.Split(a.Conditions, ","), condition)
}

// Grade of an attempt for spaced repetition: a fault is forgotten, slow or helped is
// hard, a right one good, and easy in half the target time.
func (a Attempt) Grade(target float64) Grade {
	switch {
	case a.Outcome == Fault:
		return Again
	case a.Outcome == Slow || a.Help || target > 0 && a.Seconds > target:
		return Hard
	case a.Seconds > 0 && a.Seconds <= target/2:
		return Easy
	}
	return Good
}

// Standing is where a learner is with one knot: what all attempts together come to.
type Standing struct {
	LearnerID int64  `json:"learner_id"`
	Knot      string `json:"knot"`
	Level     Level  `json:"level" minimum:"0" maximum:"5" doc:"0 not yet, 1 with help, 2 alone, 3 in time, 4 wet or in gloves, 5 in the real place"`
	Attempts  int    `json:"attempts"`
	// Right ones of them, in rope.
	Right int `json:"right"`
	// Fault seen last, until the knot is tied without one; Repeated: seen twice running.
	Fault    string    `json:"fault,omitempty"`
	Repeated bool      `json:"repeated,omitempty"`
	Best     float64   `json:"best_s,omitempty"`
	Last     time.Time `json:"last"`
	// Wetted: tied right wet or in gloves; Left, Other: on that hand or side.
	Wetted  bool `json:"wetted,omitempty"`
	LeftOK  bool `json:"left_ok,omitempty" doc:"tied right on the left hand or side"`
	RightOK bool `json:"right_ok,omitempty" doc:"tied right on the right hand or side"`
	// Memory says when it is due again.
	Memory Memory `json:"memory"`
}

// Add counts an attempt, which must not be earlier than the last. A try of the crossing
// drill counts for memory as one in rope does, and for no level.
func (s *Standing) Add(a Attempt, target float64) {
	s.LearnerID, s.Knot = a.LearnerID, a.Knot
	s.Attempts++
	s.Last = a.At
	// A clock that ran backward by less than a day changes nothing; by more, it is taken
	// as made when the last one was.
	at := a.At
	if at.Before(s.Memory.Last) {
		at = s.Memory.Last
	}
	if m, err := s.Memory.Review(at, a.Grade(target), Retention); err == nil {
		s.Memory = m
	}
	if a.Kind == Drill {
		return
	}
	if a.Outcome == Fault {
		s.Repeated = s.Fault == a.Fault
		s.Fault = a.Fault
		return
	}
	s.Fault, s.Repeated = "", false
	if a.Help {
		s.Level = max(s.Level, Helped)
		return
	}
	s.Right++
	s.Level = max(s.Level, a.Level(target))
	if a.Seconds > 0 && (s.Best == 0 || a.Seconds < s.Best) {
		s.Best = a.Seconds
	}
	s.Wetted = s.Wetted || a.In("wet") || a.In("gloves")
	s.LeftOK = s.LeftOK || a.Side == "left"
	s.RightOK = s.RightOK || a.Side == "right"
}

// StandingOf counts attempts at one knot by one learner, the earliest first.
func StandingOf(list []Attempt, target float64) Standing {
	var s Standing
	for _, a := range list {
		s.Add(a, target)
	}
	return s
}

// DueFirst orders what is due at a time: a fault seen twice first, then what is overdue
// by the largest share of its stability, then what was tried longest ago.
func DueFirst(list []Standing, now time.Time) []Standing {
	due := make([]Standing, 0, len(list))
	for _, s := range list {
		if s.Attempts > 0 && !s.Memory.Due.After(now) {
			due = append(due, s)
		}
	}
	late := func(s Standing) float64 {
		return now.Sub(s.Memory.Due).Hours() / 24 / math.Max(s.Memory.Stability, 0.1)
	}
	slices.SortStableFunc(due, func(a, b Standing) int {
		switch {
		case a.Repeated != b.Repeated:
			if a.Repeated {
				return -1
			}
			return 1
		case late(a) != late(b):
			if late(a) > late(b) {
				return -1
			}
			return 1
		}
		return a.Last.Compare(b.Last)
	})
	return due
}
