package app

import (
	"context"
	"slices"
	"time"

	"oarweed/core/evidence"
	"oarweed/core/leader"
	"oarweed/core/say"
)

const leaderKind = "leader"

var leadersKept = kindOf[leader.Book]{leaderKind, func(b *leader.Book, d Document) { b.ID, b.Revision = d.ID, d.Revision },
	func(b leader.Book) (int64, int64) { return b.ID, b.Revision }}

// LeaderCard is a leader in use with what is left of it.
type LeaderCard struct {
	leader.Book
	KnotName    string  `json:"knot_name"`
	NowM        float64 `json:"now_m"`
	ChangesLeft int     `json:"changes_left"`
	PerChangeM  float64 `json:"per_change_m"`
	// Tag is the evidence of what a change takes.
	Tag evidence.Tag `json:"tag" enum:"computed,memory"`
	// Low: the next leader should be thought of.
	Low bool `json:"low"`
	leader.Advice
	SpoolName string   `json:"spool_name,omitempty"`
	Says      []string `json:"says" nullable:"false"`
}

// LeaderBooks lists them, the last changed first.
func (s *School) LeaderBooks(ctx context.Context) ([]leader.Book, error) {
	return leadersKept.list(ctx, s)
}

// LeaderBook reads one.
func (s *School) LeaderBook(ctx context.Context, id int64) (leader.Book, error) {
	return leadersKept.one(ctx, s, id)
}

// SaveLeader keeps one. The error names each field.
func (s *School) SaveLeader(ctx context.Context, b leader.Book) (leader.Book, error) {
	if err := b.Check(s.Trade()); err != nil {
		return b, err
	}
	if b.ID != 0 {
		return leadersKept.save(ctx, s, b)
	}
	if b.Begun.IsZero() {
		b.Begun = s.now().UTC().Truncate(time.Second)
	}
	out, err := leadersKept.save(ctx, s, b)
	if err != nil || b.Own == "" {
		return out, err
	}
	return out, s.takeOff(ctx, b.Own, b.LengthM)
}

// takeOff cuts a length off a line of the locker, which is never less than nothing.
func (s *School) takeOff(ctx context.Context, code string, m float64) error {
	own, err := s.ownLines(ctx)
	if err != nil {
		return err
	}
	l, ok := own[code]
	if !ok || l.LengthM == 0 {
		return nil // how much is left of it is not known
	}
	l.LengthM = max(0.01, l.LengthM-m)
	_, err = s.records.SaveLine(ctx, l)
	return err
}

// NewTippet makes a leader what it was: so much is joined on, cut from its spool with what the
// join takes.
func (s *School) NewTippet(ctx context.Context, id int64) (leader.Book, error) {
	b, err := s.LeaderBook(ctx, id)
	if err != nil {
		return b, err
	}
	a, err := b.Advise(s.Trade())
	if err != nil {
		return b, err
	}
	now, _, err := b.Now(s.Trade())
	if err != nil {
		return b, err
	}
	add := b.LengthM - now
	b.Changes, b.LostM = 0, 0
	if b, err = leadersKept.save(ctx, s, b); err != nil || b.Own == "" {
		return b, err
	}
	return b, s.takeOff(ctx, b.Own, add+a.JoinM)
}

// DeleteLeader removes one.
func (s *School) DeleteLeader(ctx context.Context, id int64) error {
	return s.records.DeleteDocument(ctx, leaderKind, id)
}

// Leaders are the leaders in use, worked out, those with fewest changes left first.
func (s *School) Leaders(ctx context.Context) ([]LeaderCard, error) {
	list, err := s.LeaderBooks(ctx)
	if err != nil {
		return nil, err
	}
	names, err := s.lineNames(ctx)
	if err != nil {
		return nil, err
	}
	c := s.Trade()
	out := []LeaderCard{}
	for _, b := range list {
		now, left, err := b.Now(c)
		if err != nil {
			continue // its knot or material is no longer here
		}
		card := LeaderCard{Book: b, KnotName: c.Knot(b.Knot).Name, NowM: now, ChangesLeft: left.ChangesLeft, PerChangeM: left.PerChangeM, Tag: c.Knot(b.Knot).BulkTag(), Low: left.ChangesLeft <= leader.Warn, SpoolName: names[b.Own]}
		if card.Advice, err = b.Advise(c); err != nil {
			return nil, err
		}
		card.Low = card.Low || b.ActionM > 0 && card.ActionLeft <= leader.Warn
		q := b.Query
		q.LengthM = max(now, 0.001)
		better, more := leader.Better(c, q)
		name := ""
		if better != "" {
			name = c.Knot(better).Name
		}
		card.Says = append(say.Leader(left, leader.Warn, name, more), say.LeaderAdvice(b, card.Advice, left)...)
		out = append(out, card)
	}
	slices.SortStableFunc(out, func(a, b LeaderCard) int { return min(a.ChangesLeft, a.ActionLeft) - min(b.ChangesLeft, b.ActionLeft) })
	return out, nil
}

// LeaderTrip works out what a trip takes off the spools.
func (s *School) LeaderTrip(t leader.Trip) ([]leader.Needed, error) { return t.Budget(s.Trade()) }
