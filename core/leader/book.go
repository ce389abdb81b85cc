package leader

import (
	"fmt"
	"time"

	"oarweed/core/name"
	"oarweed/core/problem"
	"oarweed/core/trade"
)

// Book is a leader in use: what it began with, and how often it has been tied again since.
type Book struct {
	ID       int64  `json:"id" readOnly:"true"`
	Revision int64  `json:"revision" readOnly:"true"`
	Name     string `json:"name"`
	Query
	// Changes so far; LostM is line cut off besides: a spoilt piece, a nick.
	Changes int     `json:"changes,omitempty" minimum:"0" maximum:"10000"`
	LostM   float64 `json:"lost_m,omitempty" minimum:"0" maximum:"1000"`
	// ActionM is the length below which it no longer works as it should, though it still holds.
	ActionM float64 `json:"action_m,omitempty" minimum:"0" maximum:"1000" doc:"below this its action changes, though it still holds"`
	// Sections above the one that is tied again, from the reel down.
	Sections []Section `json:"sections,omitempty" maxItems:"12"`
	// Begun is when it was made up.
	Begun time.Time `json:"begun,omitzero"`
	// Own is the code of the spool in the locker that it is cut from.
	Own string `json:"own,omitempty" maxLength:"12" doc:"code of the spool in the locker"`
}

// Warn is from how few changes left one should think of the next leader: our own choice.
const Warn = 3

// Check reports what cannot be, by field.
func (b *Book) Check(c *trade.Catalogue) error {
	var l problem.List
	n, err := name.Clean(b.Name, 80)
	l.Take("name", err)
	b.Name = n
	if b.Changes < 0 || b.Changes > 10_000 {
		l.Add("changes", fmt.Sprintf("%d is no count", b.Changes), "give 0 or more")
	}
	if !(b.LostM >= 0 && b.LostM <= 1000) {
		l.Add("lost_m", fmt.Sprintf("%g is no length", b.LostM), "give metres, 0 or more")
	}
	if !(b.ActionM >= 0 && b.ActionM <= 1000) {
		l.Add("action_m", fmt.Sprintf("%g is no length", b.ActionM), "give metres, or leave it out")
	}
	l.Take("", checkSections(c, b.Sections))
	_, err = Budget(c, b.Query)
	l.Take("", err)
	return l.Err()
}

// Now is how long it still is, and what is left of it.
func (b Book) Now(c *trade.Catalogue) (lengthM float64, left Left, err error) {
	whole, err := Budget(c, b.Query)
	if err != nil {
		return 0, Left{}, err
	}
	q := b.Query
	q.LengthM = b.LengthM - float64(b.Changes)*whole.PerChangeM - b.LostM
	if q.LengthM <= 0 {
		return 0, Left{PerChangeM: whole.PerChangeM}, nil
	}
	left, err = Budget(c, q)
	return q.LengthM, left, err
}

// Better is the knot for the same work that would leave most changes, where that is more than
// the one that is tied; empty where none is.
func Better(c *trade.Catalogue, q Query) (knot string, left Left) {
	k := c.Knot(q.Knot)
	if k == nil {
		return "", Left{}
	}
	at, err := tied(c, k, q.Line)
	if err != nil {
		return "", Left{}
	}
	own, err := Budget(c, q)
	if err != nil {
		return "", Left{}
	}
	for _, other := range c.Knots {
		s, ok := other.Tasks[at.Task.ID]
		if !ok || s.Fit < k.Tasks[at.Task.ID].Fit-0.15 || other.ID == k.ID {
			continue // hardly made for it
		}
		x := q
		x.Knot = other.ID
		if l, err := Budget(c, x); err == nil && l.ChangesLeft > max(own.ChangesLeft, left.ChangesLeft) {
			knot, left = other.ID, l
		}
	}
	return knot, left
}
