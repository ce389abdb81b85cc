package app

import (
	"context"
	"fmt"
	"time"

	"oarweed/core/mooring"
	"oarweed/core/say"
)

// ToDo is one thing that is due, and where it is seen to.
type ToDo struct {
	Kind string `json:"kind" enum:"wind,line,gear,leader,tow,practice"`
	Name string `json:"name"`
	Says string `json:"says"`
	To   string `json:"to" doc:"view in which it is seen to"`
	// Now: it cannot wait.
	Now bool `json:"now"`
}

// mostDueTries are counted at once.
const mostDueTries = 1000

// ToDo is all that is due: the wind against moorings, lines to look over or retire, gear to look
// at again, leaders nearly too short, rubbed tow lines, tries that are due. What cannot wait
// comes first.
func (s *School) ToDo(ctx context.Context) ([]ToDo, error) {
	out := []ToDo{}
	afloat, err := s.Afloat(ctx)
	if err != nil {
		return nil, err
	}
	for _, b := range afloat.Berths {
		if b.Warn != mooring.Stands {
			out = append(out, ToDo{"wind", b.Name, b.Says, "/lines/moorings", true})
		}
	}
	if !afloat.Wind.Known && afloat.Wind.Addr != "" {
		if lying, err := s.lying(ctx); err != nil {
			return nil, err
		} else if len(lying) > 0 {
			out = append(out, ToDo{"wind", "The wind", afloat.Says, "/lines/moorings", true})
		}
	}
	lines, err := s.Locker(ctx)
	if err != nil {
		return nil, err
	}
	for _, l := range lines {
		if l.Retired == "" && (l.State.Retire != "" || l.State.LookDue) {
			out = append(out, ToDo{"line", l.Name, l.Says[0], "/lines/" + l.Code, l.State.Retire != ""})
		}
	}
	gear, err := s.LookAgain(ctx, s.now())
	if err != nil {
		return nil, err
	}
	for _, g := range gear {
		out = append(out, ToDo{"gear", g.What, say.GearDue(g), "/teach/quay", g.Person})
	}
	leaders, err := s.Leaders(ctx)
	if err != nil {
		return nil, err
	}
	for _, l := range leaders {
		if l.Low {
			out = append(out, ToDo{"leader", l.Name, l.Says[0], "/lines/leaders", false})
		}
	}
	tows, err := s.TowBooks(ctx)
	if err != nil {
		return nil, err
	}
	for _, b := range tows {
		if w := say.TowLine(b); len(w) > 0 {
			out = append(out, ToDo{"tow", b.Name, w[0], "/lines/tow", false})
		}
	}
	tries, err := s.Due(ctx, 0, s.now(), mostDueTries)
	if err != nil {
		return nil, err
	}
	if len(tries) > 0 {
		out = append(out, ToDo{"practice", "Practice", say.TriesDue(len(tries)), "/teach/due", false})
	}
	return out, nil
}

// LookDay is a day on which a line or a knot on gear is to be looked at.
type LookDay struct {
	ID, Name, Says string
	At             time.Time
}

// Looks are those that fall due until a time, for a calendar.
func (s *School) Looks(ctx context.Context, until time.Time) ([]LookDay, error) {
	lines, err := s.Locker(ctx)
	if err != nil {
		return nil, err
	}
	var out []LookDay
	for _, l := range lines {
		at, err := time.Parse(time.DateOnly, l.State.LookBy)
		if err == nil && l.Retired == "" && !at.After(until) {
			out = append(out, LookDay{"look-" + l.Code, l.Name, l.Says[0], at})
		}
	}
	gear, err := s.LookAgain(ctx, until)
	for _, g := range gear {
		out = append(out, LookDay{fmt.Sprintf("gear-%d", g.ID), g.What, say.GearDue(g), g.Again})
	}
	return out, err
}
