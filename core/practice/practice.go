// Package practice holds who tried which knot and how it came out: the rules of the
// record, not its storage.
package practice

import (
	"fmt"
	"slices"
	"strings"
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
	// Groups the learner belongs to, by name.
	Groups []string `json:"groups,omitempty" maxItems:"20" doc:"classes or crews, by name"`
	// Hand with which the learner ties.
	Hand string `json:"hand,omitempty" enum:"left,right"`
	// Craft and Course in plain words: lugger, kelp punt; leisure, service.
	Craft  string `json:"craft,omitempty" maxLength:"80"`
	Course string `json:"course,omitempty" maxLength:"80"`
	// Rope is the length a towed rider wants.
	RopeM float64 `json:"rope_m,omitempty" minimum:"0" maximum:"200" doc:"length of line a towed rider wants"`
	Note  string  `json:"note,omitempty" maxLength:"400"`
	// Archived: no longer in class, kept.
	Archived bool `json:"archived,omitempty"`
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
	var bad problem.List
	groups := l.Groups
	l.Groups = nil
	for i, g := range groups {
		c, err := name.Clean(g, 80)
		bad.Take(fmt.Sprintf("groups[%d]", i), err)
		if !slices.Contains(l.Groups, c) {
			l.Groups = append(l.Groups, c)
		}
	}
	if l.Hand != "" {
		oneOf(&bad, "hand", l.Hand, "left", "right")
	}
	for _, x := range []struct {
		field string
		text  *string
		most  int
	}{{"craft", &l.Craft, 80}, {"course", &l.Course, 80}, {"note", &l.Note, 400}} {
		*x.text = strings.TrimSpace(*x.text)
		if len([]rune(*x.text)) > x.most {
			bad.Add(x.field, "is too long", fmt.Sprintf("use %d letters at the most", x.most))
		}
	}
	if !(l.RopeM >= 0 && l.RopeM <= 200) {
		bad.Add("rope_m", fmt.Sprintf("%g is no length of a tow line", l.RopeM), "give 0 to 200")
	}
	return bad.Err()
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
	Fault   string  `json:"fault,omitempty" doc:"code of the knot's fault, where the outcome is a fault"`
	Seconds float64 `json:"seconds,omitempty" minimum:"0" maximum:"7200"`
	// Conditions combine: "wet,gloves". Dry goes with none of the others but blind and real.
	Conditions string `json:"conditions,omitempty" maxLength:"40" pattern:"^((dry|wet|gloves|blind|real)(,(wet|gloves|blind|real))*)?$" doc:"dry, or some of wet, gloves, blind (not looking), real (on the real thing) with commas between; left out: dry"`
	// Help: somebody helped.
	Help bool `json:"help,omitempty" doc:"somebody helped"`
	// Side or hand on which it was tied, where that was asked for.
	Side string `json:"side,omitempty" enum:"left,right" doc:"the hand, or the horn of a cleat, on which it was tied; left out: not noted"`
	// Judged by whom; left out: by an instructor.
	Judged string `json:"judged,omitempty" enum:"instructor,peer,self" doc:"left out: instructor"`
	// At is when it was made, by the sender's clock; left out: now.
	At time.Time `json:"at,omitzero" doc:"when it was made, 1970 to now; left out: now"`
	// ReceivedAt is when it was written down here.
	ReceivedAt time.Time `json:"received_at,omitzero" readOnly:"true"`
}

// Conditions in which a knot can be tied.
var Conditions = []string{"dry", "wet", "gloves", "blind", "real"}

// Judges of an attempt.
var Judges = []string{"instructor", "peer", "self"}

// inOrder puts conditions in the order of [Conditions], each once; "dry" only by itself.
func inOrder(l *problem.List, text string) string {
	var out []string
	given := strings.Split(text, ",")
	for _, x := range given {
		oneOf(l, "conditions", x, Conditions...)
	}
	for _, x := range Conditions[1:] {
		if slices.Contains(given, x) {
			out = append(out, x)
		}
	}
	if len(out) == 0 {
		return Conditions[0]
	}
	if slices.Contains(given, "dry") {
		l.Add("conditions", "dry goes with no other", "leave dry out")
	}
	return strings.Join(out, ",")
}

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
	a.Conditions = inOrder(&l, a.Conditions)
	if a.Judged == "" {
		a.Judged = Judges[0]
	}
	oneOf(&l, "judged", a.Judged, Judges...)
	if a.Side != "" {
		oneOf(&l, "side", a.Side, "left", "right")
	}
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
