package app

import (
	"context"

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
	Low  bool     `json:"low"`
	Says []string `json:"says" nullable:"false"`
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
	return leadersKept.save(ctx, s, b)
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
	c := s.Trade()
	out := []LeaderCard{}
	for _, b := range list {
		now, left, err := b.Now(c)
		if err != nil {
			continue // its knot or material is no longer here
		}
		card := LeaderCard{Book: b, KnotName: c.Knot(b.Knot).Name, NowM: now, ChangesLeft: left.ChangesLeft, PerChangeM: left.PerChangeM, Tag: c.Knot(b.Knot).BulkTag(), Low: left.ChangesLeft <= leader.Warn}
		q := b.Query
		q.LengthM = max(now, 0.001)
		better, more := leader.Better(c, q)
		name := ""
		if better != "" {
			name = c.Knot(better).Name
		}
		card.Says = say.Leader(left, leader.Warn, name, more)
		out = append(out, card)
	}
	return out, nil
}
