package app

import (
	"context"
	"fmt"
	"slices"
	"time"

	"oarweed/core/locker"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/usage"
)

// LineCard is a line of the locker as it is now.
type LineCard struct {
	locker.Line
	State locker.State `json:"state"`
	// Called is what it is, in words: polyester braid, 12 mm.
	Called string   `json:"called"`
	Says   []string `json:"says" nullable:"false"`
	// ThickMM is how thick it is drawn, where the diameter is not given that of its strength.
	ThickMM float64 `json:"thick_mm"`
}

// Event of a line's history.
type Event struct {
	At   time.Time `json:"at"`
	Kind string    `json:"kind" enum:"bought,look,use,retired,leader,pull"`
	Says string    `json:"says"`
	// Grade of a look, Outcome of a use.
	Grade   int              `json:"grade"`
	Outcome usage.Outcome    `json:"outcome,omitempty"`
	Knot    string           `json:"knot,omitempty"`
	PlaceM  float64          `json:"place_m,omitempty"`
	Photos  map[string]int64 `json:"photos,omitempty" doc:"by what they show"`
	To      string           `json:"to,omitempty" doc:"view in which there is more of it"`
}

// LinePage is a line with its whole history, the newest first.
type LinePage struct {
	LineCard
	History []Event `json:"history" nullable:"false"`
	// Tallies of the log: this line, and the knots that were tied in it.
	Tally usage.Tally   `json:"tally"`
	Knots []usage.Tally `json:"knots" nullable:"false"`
}

// withOwn is a rig with what the locker knows of each line that is one of it. A line that is no
// longer there keeps what the rig says of it.
func (s *School) withOwn(ctx context.Context, d rig.Document) (rig.Document, error) {
	if s.records == nil || !slices.ContainsFunc(d.Chain, func(e rig.Element) bool { return e.Line != nil && e.Line.Own != "" }) {
		return d, nil
	}
	own, err := s.ownLines(ctx)
	if err != nil {
		return d, err
	}
	d = d.Clone()
	for _, e := range d.Chain {
		if e.Line == nil {
			continue
		}
		if l, ok := own[e.Line.Own]; ok {
			*e.Line = e.Line.As(l.Line)
		}
	}
	return d, nil
}

// ownLines are those of the locker by code.
func (s *School) ownLines(ctx context.Context) (map[string]locker.Line, error) {
	list, err := s.records.Lines(ctx)
	out := map[string]locker.Line{}
	for _, l := range list {
		out[l.Code] = l
	}
	return out, err
}

// Locker lists the lines as they are now: those to be seen to before the rest, the retired last.
func (s *School) Locker(ctx context.Context) ([]LineCard, error) {
	list, err := s.records.Lines(ctx)
	if err != nil {
		return nil, err
	}
	used, err := s.records.LinesUsed(ctx)
	if err != nil {
		return nil, err
	}
	out := []LineCard{}
	for _, l := range list {
		c, err := s.lineCard(l, used[l.Code])
		if err != nil {
			continue // its material is no longer here
		}
		out = append(out, c)
	}
	rank := func(c LineCard) int {
		switch {
		case c.Retired != "":
			return 3
		case c.State.Retire != "":
			return 0
		case c.State.LookDue:
			return 1
		}
		return 2
	}
	slices.SortStableFunc(out, func(a, b LineCard) int { return rank(a) - rank(b) })
	return out, nil
}

func (s *School) lineCard(l locker.Line, u LineUsed) (LineCard, error) {
	v := &s.Trade().Vocabulary
	at, err := l.At(v, u.Used, s.now())
	if err != nil {
		return LineCard{}, err
	}
	ln, err := v.LineOf(l.Line)
	if err != nil {
		return LineCard{}, err
	}
	whole, _ := ln.Complete()
	return LineCard{Line: l, State: at, Called: say.Line(ln), Says: say.LineState(l, at), ThickMM: whole.Diameter.MM()}, nil
}

// mostEvents of one line's log that its page shows.
const mostEvents = 200

// LineByCode is a line with its history, by the code on its label.
func (s *School) LineByCode(ctx context.Context, code string) (*LinePage, error) {
	own, err := s.ownLines(ctx)
	if err != nil {
		return nil, err
	}
	l, ok := own[code]
	if !ok {
		return nil, ErrNotFound
	}
	used, err := s.records.LinesUsed(ctx)
	if err != nil {
		return nil, err
	}
	card, err := s.lineCard(l, used[code])
	if err != nil {
		return nil, err
	}
	out := &LinePage{LineCard: card, History: []Event{}, Knots: []usage.Tally{}}
	for _, k := range l.Looks {
		out.History = append(out.History, Event{At: k.At, Kind: "look", Says: say.Looked(k), Grade: k.Worst(), PlaceM: k.PlaceM, Photos: k.Photos})
	}
	for kind, day := range map[string]string{"bought": l.Bought, "retired": l.Retired} {
		if at, err := time.Parse(time.DateOnly, day); err == nil {
			out.History = append(out.History, Event{At: at, Kind: kind, Says: say.LineDay(kind)})
		}
	}
	uses, _, err := s.records.Uses(ctx, usage.Filter{Line: code}, Page{Limit: mostEvents})
	if err != nil {
		return nil, err
	}
	c := s.Trade()
	for _, e := range uses {
		ev := Event{At: e.At, Kind: "use", Outcome: e.Outcome, Knot: e.Knot, PlaceM: e.PlaceM}
		name := ""
		if k := c.Knot(e.Knot); k != nil {
			name = k.Name
		}
		ev.Says = say.Used(e, name)
		if e.Photo != 0 {
			ev.Photos = map[string]int64{string(e.Outcome): e.Photo}
		}
		out.History = append(out.History, ev)
	}
	books, err := s.LeaderBooks(ctx)
	if err != nil {
		return nil, err
	}
	for _, b := range books {
		if b.Own == code {
			out.History = append(out.History, Event{At: b.Begun, Kind: "leader", Says: say.CutForLeader(b), Knot: b.Knot})
		}
	}
	pulled, err := s.pulledOf(ctx, l)
	if err != nil {
		return nil, err
	}
	out.History = append(out.History, pulled...)
	slices.SortStableFunc(out.History, func(a, b Event) int { return b.At.Compare(a.At) })
	counts, err := s.records.Used(ctx, usage.Filter{Line: code})
	if err != nil {
		return nil, err
	}
	out.Tally = usage.Tally{Of: code, By: map[usage.Outcome]int{}}
	if t := usage.Tallies(counts.Lines, func(c usage.Count) string { return c.Line }); len(t) > 0 {
		out.Tally = t[0]
	}
	out.Knots = usage.Tallies(counts.Knots, func(c usage.Count) string { return c.Knot })
	return out, nil
}

// pulledOf are the series on the bench that were cut from a line, each at its last pull.
func (s *School) pulledOf(ctx context.Context, l locker.Line) ([]Event, error) {
	series, err := s.AllSeries(ctx)
	if err != nil {
		return nil, err
	}
	pulls, err := s.AllPulls(ctx)
	if err != nil {
		return nil, err
	}
	var out []Event
	for _, x := range series {
		if x.Line.Own != l.Code && !(x.Line.Own == "" && x.From == l.Name) {
			continue
		}
		ev, n := Event{Kind: "pull", To: fmt.Sprintf("/bench/%d", x.ID)}, 0
		for _, p := range pulls {
			if p.Series == x.Key {
				n++
				if p.At.After(ev.At) {
					ev.At = p.At
				}
			}
		}
		if n > 0 {
			ev.Says = say.PulledOnBench(x.Name, n)
			out = append(out, ev)
		}
	}
	return out, nil
}

// LookOver adds a look to a line; its wear becomes what was found.
func (s *School) LookOver(ctx context.Context, id, revision int64, k locker.Look) (locker.Line, error) {
	l, err := s.records.Line(ctx, id)
	if err != nil {
		return l, err
	}
	l.Revision = revision
	l.Looks = append(l.Looks, k)
	return s.SaveLine(ctx, l)
}
