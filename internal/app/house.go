package app

import (
	"cmp"
	"context"
	"math"
	"slices"

	"oarweed/core/bench"
	"oarweed/core/knot"
	"oarweed/core/rank"
	"oarweed/core/rig"
	"oarweed/core/say"
	"oarweed/core/trade"
)

// house lays pulls over the catalogue's figure for a knot; false where too few failed.
func (s *School) house(k *knot.Knot, x bench.Series, values []bench.Value, lineKN float64) (bench.House, bool) {
	fit, err := bench.FitWeibull(values)
	if err != nil || k == nil || fit.Failures < leastFailures || lineKN <= 0 {
		return bench.House{}, false
	}
	h, err := bench.Efficiency(s.usual.Knot(k.ID).EfficiencyIn(x.Line.Material, "").Value, fit, lineKN)
	return h, err == nil && h.Weight > 0 && !math.IsNaN(h.Weight)
}

// layPulls lays what the school's own pulls say over what it teaches.
func (s *School) layPulls(ctx context.Context) error {
	set, err := s.BenchSettings(ctx)
	if err != nil {
		return err
	}
	var own []trade.Pulled
	var wraps []trade.OwnWraps
	if !set.Out {
		wraps = set.Wraps
		if own, err = s.pulled(ctx); err != nil {
			return err
		}
	}
	s.hand.Lock()
	defer s.hand.Unlock()
	s.own, s.wraps = own, wraps
	s.taught.Store(s.plain.Load().WithPulls(own).WithWraps(wraps))
	return nil
}

// pulled is what all pulls say of each knot in each kind of line, tied as usual.
func (s *School) pulled(ctx context.Context) ([]trade.Pulled, error) {
	all, err := s.AllSeries(ctx)
	if err != nil {
		return nil, err
	}
	pulls, err := pullKept.list(ctx, s)
	if err != nil {
		return nil, err
	}
	type group struct {
		knot, material string
		in             knot.In
	}
	// Loads of different lines are brought together as shares of what each bears.
	shares, slipped := map[group][]bench.Value{}, map[group]int{}
	of := map[group]bench.Series{}
	for _, x := range all {
		l, bears, err := s.lineOf(x)
		if err != nil || bears.Likely <= 0 {
			continue
		}
		var mine []bench.Pull
		for _, p := range pulls {
			if p.Series == x.Key {
				mine = append(mine, p)
			}
		}
		for v, values := range bench.ValuesOf(mine) {
			if v.Wraps+v.Finishing > 0 || v.Undressed {
				continue // not as usual
			}
			g := group{v.Knot, x.Line.Material, knot.In{Construction: string(l.Construction), Wet: x.Wet}}
			of[g] = x
			for _, y := range values {
				shares[g] = append(shares[g], bench.Value{LoadKN: y.LoadKN / bears.Likely, Failed: y.Failed})
			}
		}
		for _, p := range mine {
			a, b := p.Gave()
			for _, end := range []struct {
				gave bool
				t    bench.Tied
			}{{a, p.A}, {b, p.B}} {
				if end.gave && p.Outcome == bench.SlippedOut {
					slipped[group{end.t.Knot, x.Line.Material, knot.In{Construction: string(l.Construction), Wet: x.Wet}}]++
				}
			}
		}
	}
	var out []trade.Pulled
	for g, values := range shares {
		k := s.usual.Knot(g.knot)
		h, ok := s.house(k, of[g], values, 1)
		if !ok {
			continue
		}
		failed := 0
		for _, v := range values {
			if v.Failed {
				failed++
			}
		}
		fails := knot.Breaks
		if 2*slipped[g] > failed {
			fails = knot.Gives
		}
		ran := bench.Duel{AGave: slipped[g], BGave: failed - slipped[g]}
		out = append(out, trade.Pulled{Knot: g.knot, Material: g.material, In: g.in, Value: h.Value, Dist: h.Dist(), Fails: fails,
			Slips: ran.BStronger() >= bench.EnoughSure, Why: say.SlippedOften(slipped[g], failed), Source: say.HouseSource(failed, len(values), h.Weight)})
	}
	slices.SortFunc(out, func(a, b trade.Pulled) int {
		return cmp.Or(cmp.Compare(a.Knot, b.Knot), cmp.Compare(a.Material, b.Material), cmp.Compare(a.In.Construction, b.In.Construction))
	})
	return out, nil
}

// houseMoved says what own pulls changed at a joint: the figure, and the place in the order.
func (s *School) houseMoved(r rig.Document) []string {
	s.hand.Lock()
	own, wraps, plain := s.own, s.wraps, s.plain.Load()
	s.hand.Unlock()
	out := []string{}
	// Where people depend on it no number of one's own may read as an approval.
	if len(own)+len(wraps) == 0 || r.Consequence == rig.Person {
		return out
	}
	now, err := s.Trade().Resolve(r)
	if err != nil {
		return out
	}
	was, err := plain.Resolve(r)
	if err != nil {
		return out
	}
	in := knot.In{Construction: string(now.Line.Construction), Wet: now.Wet}
	var with, without rank.Order
	for _, p := range own {
		if p.Material != now.Line.Material.ID || p.In != in {
			continue
		}
		if with.Rig == nil {
			with, without = rank.Joint(s.Trade(), now), rank.Joint(plain, was)
		}
		place, share := placeOf(with, p.Knot)
		wasPlace, _ := placeOf(without, p.Knot)
		if place == 0 && wasPlace == 0 {
			continue
		}
		if place == 0 {
			share = p.Value.Likely
		}
		k := plain.Knot(p.Knot)
		out = append(out, say.HouseMoved(k.Name, share, k.EfficiencyIn(p.Material, now.Task.ID).Value.Likely, place, wasPlace))
	}
	if lb := now.Line.Label.LbTest(); lb > 0 {
		for _, w := range wraps {
			if k := plain.Knot(w.Knot); w.Covers(lb) && k.Tasks[now.Task.ID].Fit > 0 {
				out = append(out, say.OwnWraps(k.Name, w.N))
			}
		}
	}
	return out
}

func placeOf(o rank.Order, id string) (place int, share float64) {
	for i, x := range o.Ranked {
		if x.Knot.ID == id {
			return i + 1, x.Strength.Share.Likely
		}
	}
	return 0, 0
}
