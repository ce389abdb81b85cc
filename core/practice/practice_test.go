package practice_test

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"oarweed/core/knot"
	"oarweed/core/practice"
	"oarweed/core/problem"
)

var (
	now     = time.Date(2026, 6, 2, 10, 0, 0, 0, time.UTC)
	bowline = &knot.Knot{ID: "bowline", Faults: []knot.Fault{{Code: "tail-short"}}}
)

func Example() {
	a := practice.Attempt{LearnerID: 1, Knot: "bowline", Outcome: practice.Right}
	fmt.Println(a.Check(bowline, now), a.Kind, a.Conditions, a.Shows())
	// Output: <nil> tied dry true
}

func TestAttemptsAreHeldAgainstTheirKnot(t *testing.T) {
	good := practice.Attempt{LearnerID: 1, Knot: "bowline", Outcome: practice.Fault, Fault: "tail-short", Seconds: 12}
	for field, change := range map[string]func(*practice.Attempt){
		"":           func(*practice.Attempt) {},
		"kind":       func(a *practice.Attempt) { a.Kind = "guessed" },
		"outcome":    func(a *practice.Attempt) { a.Outcome, a.Fault = "nice", "" },
		"conditions": func(a *practice.Attempt) { a.Conditions = "storm" },
		"seconds":    func(a *practice.Attempt) { a.Seconds = math.NaN() },
		"fault":      func(a *practice.Attempt) { a.Fault = "eye-big" },
		"at":         func(a *practice.Attempt) { a.At = time.Unix(-1, 0) },
		"key":        func(a *practice.Attempt) { a.Key = string(make([]byte, 65)) },
	} {
		a := good
		change(&a)
		err := a.Check(bowline, now)
		if field == "" {
			assert.NoError(t, err)
			continue
		}
		fields := problem.Fields(err)
		if assert.Len(t, fields, 1, field) {
			assert.Equal(t, field, fields[0].Path)
			assert.NotEmpty(t, fields[0].Fix)
		}
	}
	unknown := good
	assert.ErrorContains(t, unknown.Check(nil, now), "not in the catalogue")
}

// A phone's clock runs a little ahead; an hour is no clock.
func TestClocksDiffer(t *testing.T) {
	for ahead, ok := range map[time.Duration]bool{-time.Hour: true, time.Minute: true, time.Hour: false} {
		a := practice.Attempt{LearnerID: 1, Knot: "bowline", Outcome: practice.Right, At: now.Add(ahead)}
		err := a.Check(bowline, now)
		assert.Equal(t, ok, err == nil, "%v ahead: %v", ahead, err)
		if ok {
			assert.False(t, a.At.After(now))
		}
	}
}

// A crossing drill on a screen shows nothing about hands.
func TestWhatShowsThatItIsKnown(t *testing.T) {
	for _, x := range []struct {
		kind    practice.Kind
		outcome practice.Outcome
		shows   bool
	}{{practice.Tied, practice.Right, true}, {practice.Tied, practice.Slow, true}, {practice.Tied, practice.Fault, false}, {practice.Drill, practice.Right, false}} {
		assert.Equal(t, x.shows, practice.Attempt{Kind: x.kind, Outcome: x.outcome}.Shows(), "%v", x)
	}
}
