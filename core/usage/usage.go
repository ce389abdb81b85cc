// Package usage is the log of what was rigged where and what came of it. Each entry counts on
// the lines it names and on its knot.
package usage

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"oarweed/core/locker"
	"oarweed/core/name"
	"oarweed/core/problem"
)

// Outcome is what happened.
type Outcome string

const (
	Held    Outcome = "held"
	Slipped Outcome = "slipped"
	Jammed  Outcome = "jammed"
	Broke   Outcome = "broke"
	Chafed  Outcome = "chafed"
	Late    Outcome = "late" // it could not be cast off in time
)

// Outcomes are all of them, the good one first.
var Outcomes = []Outcome{Held, Slipped, Jammed, Broke, Chafed, Late}

// Hurts reports whether the outcome is a reason to look at the line again: a jam or a late cast
// off is the knot's doing.
func (o Outcome) Hurts() bool { return o == Slipped || o == Broke || o == Chafed }

// Entry is one use of a rig.
type Entry struct {
	ID int64 `json:"id" readOnly:"true"`
	// Key is made by whoever sends it, so that sending it again makes no second one.
	Key   string    `json:"key,omitempty" maxLength:"64"`
	At    time.Time `json:"at" required:"false" doc:"left out: now"`
	Where string    `json:"where" maxLength:"120"`
	Rig   string    `json:"rig,omitempty" maxLength:"80" doc:"what was rigged, in words"`
	// Line and Other are codes of the locker, Knot an id of the catalogue.
	Line    string  `json:"line,omitempty" maxLength:"12" doc:"code of a line of the locker"`
	Other   string  `json:"other,omitempty" maxLength:"12" doc:"code of a second line, for two that were joined"`
	Knot    string  `json:"knot,omitempty"`
	Outcome Outcome `json:"outcome" enum:"held,slipped,jammed,broke,chafed,late"`
	Hours   float64 `json:"hours,omitempty" minimum:"0" maximum:"10000" doc:"how long it was in use"`
	PlaceM  float64 `json:"place_m,omitempty" minimum:"0" maximum:"2000" doc:"where along the line it happened, from its first end"`
	WindKn  float64 `json:"wind_kn,omitempty" minimum:"0" maximum:"250"`
	Note    string  `json:"note,omitempty" maxLength:"400"`
	Photo   int64   `json:"photo,omitempty"`
}

const clocks = 10 * time.Minute // by which those of two devices differ

// Check puts an entry in order. known says whether the catalogue has a knot. The error names
// each field.
func (e *Entry) Check(known func(knot string) bool, now time.Time) error {
	var bad problem.List
	where, err := name.Clean(e.Where, 120)
	bad.Take("where", err)
	e.Where = where
	if e.Rig != "" {
		r, err := name.Clean(e.Rig, 80)
		bad.Take("rig", err)
		e.Rig = r
	}
	if e.Key != "" {
		_, err := name.Clean(e.Key, 64)
		bad.Take("key", err)
	}
	if e.At.IsZero() {
		e.At = now
	}
	if e.At.After(now.Add(clocks)) {
		bad.Add("at", "is in the future", "give the time, or leave it out")
	}
	e.At = e.At.UTC().Truncate(time.Second)
	for field, code := range map[string]string{"line": e.Line, "other": e.Other} {
		if code != "" && !locker.Known(code) {
			bad.Add(field, fmt.Sprintf("%q is no code of a line", code), "choose a line of the locker")
		}
	}
	if e.Other != "" && (e.Line == "" || e.Line == e.Other) {
		bad.Add("other", "is not a second line", "name two lines that differ, or one alone")
	}
	if e.Knot != "" && !known(e.Knot) {
		bad.Add("knot", fmt.Sprintf("%q is not in the catalogue", e.Knot), "choose a knot, or leave it out")
	}
	if e.Line == "" && e.Knot == "" {
		bad.Add("line", "is missing, and the knot too", "say with which line or which knot it was rigged")
	}
	if !slices.Contains(Outcomes, e.Outcome) {
		words := make([]string, len(Outcomes))
		for i, o := range Outcomes {
			words[i] = string(o)
		}
		bad.Add("outcome", fmt.Sprintf("%q is not known", e.Outcome), "use "+strings.Join(words, ", "))
	}
	for field, x := range map[string]struct{ v, most float64 }{"hours": {e.Hours, 10_000}, "place_m": {e.PlaceM, 2000}, "wind_kn": {e.WindKn, 250}} {
		if !(x.v >= 0 && x.v <= x.most) {
			bad.Add(field, fmt.Sprintf("%g is outside 0 to %g", x.v, x.most), "correct the number, or leave it out")
		}
	}
	if len([]rune(e.Note)) > 400 {
		bad.Add("note", "is too long", "use 400 letters at the most")
	}
	return bad.Err()
}

// Filter narrows the log; zero values let all pass.
type Filter struct {
	Line, Knot string
	Outcome    Outcome
	// Wrong: only what did not hold or did not come off in time.
	Wrong bool
	// Where it was, as it was written but for capitals.
	Where string
	// From and To are days, as 2026-05-31; both count.
	From, To string
}

// Count is how often something came out one way.
type Count struct {
	Line    string  `json:"line,omitempty"`
	Knot    string  `json:"knot,omitempty"`
	Outcome Outcome `json:"outcome"`
	N       int     `json:"n"`
	Hours   float64 `json:"hours"`
}

// Tally is the counts of one line or knot.
type Tally struct {
	Of    string          `json:"of"`
	N     int             `json:"n"`
	Hours float64         `json:"hours"`
	By    map[Outcome]int `json:"by"`
	// Worst is what went wrong most often; empty where nothing did.
	Worst Outcome `json:"worst,omitempty" enum:"slipped,jammed,broke,chafed,late"`
}

// Wrong is how often something went wrong.
func (t Tally) Wrong() int { return t.N - t.By[Held] }

// Tallies sums counts up by what of says, those with most wrong first, then the most used.
func Tallies(counts []Count, of func(Count) string) []Tally {
	at := map[string]int{}
	out := []Tally{}
	for _, c := range counts {
		id := of(c)
		if id == "" {
			continue
		}
		i, ok := at[id]
		if !ok {
			i = len(out)
			at[id] = i
			out = append(out, Tally{Of: id, By: map[Outcome]int{}})
		}
		t := &out[i]
		t.N += c.N
		t.Hours += c.Hours
		t.By[c.Outcome] += c.N
	}
	for i := range out {
		most := 0
		for _, o := range Outcomes[1:] {
			if n := out[i].By[o]; n > most {
				most, out[i].Worst = n, o
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Tally) int {
		if d := b.Wrong() - a.Wrong(); d != 0 {
			return d
		}
		if d := b.N - a.N; d != 0 {
			return d
		}
		return strings.Compare(a.Of, b.Of)
	})
	return out
}
