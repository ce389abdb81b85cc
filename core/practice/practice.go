// Package practice holds who tried which knot and how it came out: the rules of the
// record, not its storage.
package practice

import (
	"fmt"
	"slices"
	"time"

	"oarweed/core/knot"
	"oarweed/core/name"
	"oarweed/core/problem"
)

// Learner is somebody who practises.
type Learner struct {
	ID   int64  `json:"id" readOnly:"true"`
	Name string `json:"name" minLength:"1" maxLength:"80"`
	// Knows lists the knots this learner has tied without a fault.
	Knows []string `json:"knows" readOnly:"true" nullable:"false" doc:"knots tied without a fault"`
	// Revision counts the changes to the record.
	Revision int64 `json:"revision" readOnly:"true"`
}

// Clean puts the learner's name in order; the error names the field.
func (l *Learner) Clean() error {
	n, err := name.Clean(l.Name, 80)
	if err != nil {
		return problem.At("name", err)
	}
	l.Name = n
	return nil
}

// Kind of attempt.
type Kind string

const (
	Tied  Kind = "tied"  // in rope
	Drill Kind = "drill" // crossings set on the screen
)

// Outcome of an attempt.
type Outcome string

const (
	Right Outcome = "right"
	Slow  Outcome = "slow"
	Fault Outcome = "fault"
)

// Attempt is one try at a knot.
type Attempt struct {
	ID int64 `json:"id" readOnly:"true"`
	// Key is made by whoever sends the attempt, so that sending it again makes no
	// second record.
	Key       string  `json:"key,omitempty" maxLength:"64" doc:"made by the sender; the same key makes one record however often it is sent"`
	LearnerID int64   `json:"learner_id"`
	Learner   string  `json:"learner,omitempty" readOnly:"true"`
	Knot      string  `json:"knot"`
	Kind      Kind    `json:"kind,omitempty" enum:"tied,drill" doc:"in rope, or crossings set on the screen; left out: tied"`
	Outcome   Outcome `json:"outcome" enum:"right,slow,fault"`
	// Fault is a fault code of the knot, where the outcome is a fault.
	Fault      string  `json:"fault,omitempty" doc:"code of the knot's fault, where the outcome is a fault"`
	Seconds    float64 `json:"seconds,omitempty" minimum:"0" maximum:"7200"`
	Conditions string  `json:"conditions,omitempty" enum:"dry,wet,gloves,blind,real" doc:"left out: dry"`
	// At is when it was made, by the sender's clock; left out: now.
	At time.Time `json:"at,omitzero" doc:"when it was made, 1970 to now; left out: now"`
	// ReceivedAt is when it was written down here.
	ReceivedAt time.Time `json:"received_at,omitzero" readOnly:"true"`
}

// Conditions in which a knot can be tied.
var Conditions = []string{"dry", "wet", "gloves", "blind", "real"}

// clocksDiffer is how far a sender's clock may be ahead of ours before what it says is
// called the future.
const clocksDiffer = 2 * time.Minute

// Check fills in what was left out and holds the attempt against its knot, nil where
// the catalogue has none by that id. The error names each field.
func (a *Attempt) Check(k *knot.Knot, now time.Time) error {
	var l problem.List
	if a.Kind == "" {
		a.Kind = Tied
	}
	if a.Conditions == "" {
		a.Conditions = Conditions[0]
	}
	oneOf(&l, "kind", a.Kind, Tied, Drill)
	oneOf(&l, "outcome", a.Outcome, Right, Slow, Fault)
	oneOf(&l, "conditions", a.Conditions, Conditions...)
	if !(a.Seconds >= 0 && a.Seconds <= 7200) {
		l.Add("seconds", fmt.Sprintf("%g is not a time", a.Seconds), "give 0 to 7200")
	}
	if len(a.Key) > 64 {
		l.Add("key", "is too long", "use 64 letters at the most")
	}
	switch {
	case a.At.IsZero() || a.At.After(now) && a.At.Before(now.Add(clocksDiffer)):
		a.At = now
	case a.At.Before(time.Unix(0, 0)):
		l.Add("at", "is before 1970", "give the time at which it was made, or leave it out")
	case a.At.After(now):
		l.Add("at", "is in the future", "give the time at which it was made, or leave it out")
	}
	// Kept to the microsecond: what is saved comes back equal.
	a.At, a.ReceivedAt = a.At.UTC().Truncate(time.Microsecond), now.UTC().Truncate(time.Microsecond)
	if k == nil {
		l.Add("knot", fmt.Sprintf("%q is not in the catalogue", a.Knot), "choose a knot")
		return l.Err()
	}
	known := slices.ContainsFunc(k.Faults, func(f knot.Fault) bool { return f.Code == a.Fault })
	switch {
	case a.Kind == Drill:
		// What was made is told by the drill, not by a fault of the catalogue.
	case a.Outcome == Fault && !known:
		l.Add("fault", "say which fault it was", "choose one of the knot's faults")
	case a.Outcome != Fault && a.Fault != "":
		l.Add("fault", "goes only with the outcome fault", "drop it, or change the outcome")
	}
	return l.Err()
}

// Shows reports whether the attempt shows that the learner can tie the knot: in rope,
// without a fault.
func (a Attempt) Shows() bool { return a.Kind == Tied && a.Outcome != Fault }

func oneOf[T ~string](l *problem.List, path string, v T, list ...T) {
	if !slices.Contains(list, v) {
		l.Add(path, fmt.Sprintf("%q is not known", v), fmt.Sprintf("use one of %v", list))
	}
}
