package app

import (
	"cmp"
	"context"
	"slices"

	"oarweed/core/bench"
	"oarweed/core/say"
)

// LedgerCard is a disputed claim beside what the school has pulled and seen.
type LedgerCard struct {
	bench.Claim
	Verdict bench.Verdict `json:"verdict" enum:"agrees,disagrees,too-few"`
	For     int           `json:"for"`
	Counter int           `json:"counter"`
	More    int           `json:"more" doc:"further pulls that would tell; 200: not even so many"`
	Says    string        `json:"says"`
	Log     []string      `json:"log" nullable:"false" doc:"what the class log holds of the knots"`
	// Next is its place among the claims that are worth pulling next, from 1; 0: it is told, or no
	// two knots could be pulled for it.
	Next int `json:"next,omitempty" doc:"place among the claims worth pulling next, from 1; left out: none"`
}

// Ledger holds every disputed claim against the school's own pulls and its class log.
func (s *School) Ledger(ctx context.Context) ([]LedgerCard, error) {
	all, err := s.AllSeries(ctx)
	if err != nil {
		return nil, err
	}
	material := map[string]string{}
	for _, x := range all {
		material[x.Key] = x.Line.Material
	}
	pulls, err := s.AllPulls(ctx)
	if err != nil {
		return nil, err
	}
	c := s.Trade()
	out := []LedgerCard{}
	for _, x := range c.Claims {
		h := x.Hold(pulls, func(series string) string { return material[series] })
		card := LedgerCard{Claim: x, Verdict: h.Verdict, For: h.For, Counter: h.Counter, More: h.More, Says: say.Standing(h), Log: []string{}}
		seen := map[string]bool{}
		for _, e := range []*bench.ClaimEnd{x.Stronger, x.Weaker, x.Slips} {
			if e == nil || seen[e.Knot] {
				continue
			}
			seen[e.Knot] = true
			totals, err := s.records.Totals(ctx, Filter{Knot: e.Knot}, 1000)
			if err != nil {
				return nil, err
			}
			tries, faults := 0, 0
			for _, t := range totals {
				tries, faults = tries+t.Right+t.Slow+t.Fault, faults+t.Fault
			}
			if words := say.ClassLog(c.Knot(e.Knot).Name, tries, faults); words != "" {
				card.Log = append(card.Log, words)
			}
		}
		out = append(out, card)
	}
	var open []int
	for i, c := range out {
		if c.Verdict == bench.TooSoon && c.Stronger != nil && c.Weaker != nil && c.Stronger.Knot != c.Weaker.Knot {
			open = append(open, i)
		}
	}
	// The nearest to an answer first: most pulled, then fewest still to pull.
	slices.SortStableFunc(open, func(a, b int) int {
		return cmp.Or(out[b].For+out[b].Counter-out[a].For-out[a].Counter, out[a].More-out[b].More)
	})
	for n, i := range open {
		out[i].Next = n + 1
	}
	return out, nil
}
