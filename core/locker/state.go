package locker

import (
	"time"

	"oarweed/core/evidence"
	"oarweed/core/rig"
)

// Used is what the log holds of a line.
type Used struct {
	Hours float64
	Trips int
	// Bad is when something was last found wrong with it: it chafed, slipped or broke.
	Bad time.Time
}

// Reason why a line should not be used any more.
type Reason string

const (
	// Broken: it was found to be of grade 3. Past: its day has come. Old: older than [OldYears].
	Worn Reason = "worn"
	Past Reason = "past"
	Old  Reason = "old"
)

// OldYears is after how many years textile lines are commonly put aside even if they look well:
// from memory, kept wide. It is said, and does not rule a line out.
var OldYears = evidence.Figure{Interval: evidence.Interval{Low: 5, Likely: 8, High: 10}, Tag: evidence.Memory,
	Source: "makers' advice for fibre ropes and webbing in use, from memory, kept wide: what yours says wins"}

// State is how a line is now.
type State struct {
	// New is its strength new and dry, Now what is left of it wet and worn, both in kN.
	New evidence.Figure `json:"new_kn"`
	Now evidence.Figure `json:"now_kn"`
	// Hours and Trips in all.
	Hours float64 `json:"hours"`
	Trips int     `json:"trips"`
	// LookBy is the day by which it is to be looked over; LookDue: that has come, or something
	// was found wrong with it since the last look.
	LookBy  string `json:"look_by"`
	LookDue bool   `json:"look_due"`
	// Since: something went wrong with it since it was last looked at.
	Since bool `json:"since,omitempty" doc:"something went wrong with it since it was last looked at"`
	// Retire says why it should not be used, of what it is plainest; empty if it may.
	Retire Reason `json:"retire,omitempty" enum:"worn,past"`
	// Old: it is older than textile lines are commonly used; Years are those since it was bought.
	Old   bool    `json:"old,omitempty"`
	Years float64 `json:"years,omitempty"`
}

const year = 365.25 * 24 * time.Hour

// At is how the line is at a time, with what the log holds of it. A line of unknown age that
// was never looked at is to be looked at now.
func (l *Line) At(v *rig.Vocabulary, u Used, now time.Time) (State, error) {
	ln, err := v.LineOf(l.Line)
	if err != nil {
		return State{}, err
	}
	s, err := ln.Bears(true)
	if err != nil {
		return State{}, err
	}
	out := State{New: s.AsNew.InKN(), Now: s.Capacity.InKN(), Hours: l.Hours + u.Hours, Trips: l.Trips + u.Trips}
	bought, _ := dayOf(l.Bought)
	since := bought
	if k := l.Last(); k != nil {
		since = k.At
	}
	every := l.LookEvery
	if every == 0 {
		every = Every
	}
	if since.IsZero() {
		out.LookBy, out.LookDue = now.Format(dayForm), true
	} else {
		by := since.AddDate(0, 0, every)
		out.LookBy, out.LookDue = by.Format(dayForm), !by.After(now)
	}
	// Within one second nobody knows which came first: it counts as the use.
	if out.Since = !u.Bad.IsZero() && !u.Bad.Before(since); out.Since {
		out.LookDue = true
	}
	if !bought.IsZero() {
		out.Years = now.Sub(bought).Hours() / year.Hours()
		out.Old = ln.Material.ID != "wire" && out.Years >= OldYears.Low
	}
	switch by, _ := dayOf(l.RetireBy); {
	case l.Wear >= 3:
		out.Retire = Worn
	case !by.IsZero() && now.After(by.AddDate(0, 0, 1)):
		out.Retire = Past
	}
	if l.Retired != "" {
		out.LookDue = false
	}
	return out, nil
}
