package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/bench"
	"oarweed/core/line"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

// pulled plans two series on the harbour school's bench and pulls most of the first, with
// simulated traces, and a few of the second off a dial.
func pulled(ctx context.Context, s *app.School, now time.Time) error {
	bowline, eight, shaft := bench.Tied{Knot: "bowline", By: "Ailsa"}, bench.Tied{Knot: "figure-eight-loop", By: "Eskil"}, bench.Tied{Knot: "shaft-knot"}
	spear, err := s.SaveSeries(ctx, bench.Series{Name: "Spear gun cord: bowline or shaft knot", GaugeMM: 600, YardstickKN: 0.98,
		Line: rig.Line{Material: "hmpe", Construction: line.Twelve, DiameterMM: 1.8, LabelKN: 2.6}, Specimens: bench.Pairs(bowline, shaft, 6)})
	if err != nil {
		return err
	}
	for i, kn := range []float64{0.71, 0.66, 0.74} {
		x := spear.Specimens[i]
		where := bench.KnotA
		if x.A != bowline {
			where = bench.KnotB
		}
		if _, err := s.SavePull(ctx, bench.Pull{Key: fmt.Sprintf("demo-spear-%d", i), Series: spear.Key, At: now.Add(-30*hour + time.Duration(i)*5*time.Minute), A: x.A, B: x.B,
			Source: bench.FromDial, PeakKN: kn, Outcome: bench.SlippedOut, Where: where}); err != nil {
			return err
		}
	}
	painter, err := s.SaveSeries(ctx, bench.Series{Name: "Bowline and eight, dry", GaugeMM: 800, SpeedMMS: 5, From: "Spare painter, red fleck",
		Line: rig.Line{Material: "polyester", Construction: line.Braid, DiameterMM: 8, LabelKN: 12.5}, Specimens: bench.Pairs(bowline, eight, 10)})
	if err != nil {
		return err
	}
	rnd := rand.New(rand.NewPCG(18, 4))
	strong := map[string]distuv.Weibull{"bowline": {K: 17, Lambda: 7.7}, "figure-eight-loop": {K: 20, Lambda: 8.15}}
	for i, x := range painter.Specimens[:8] {
		p := bench.Simulated{LineKN: 12.5, StretchAt: 0.14, GaugeMM: 800, SpeedMMS: 3 + 0.4*rnd.Float64(), Hertz: 50, NoiseKN: 0.02, DriftKNS: 0.001, ZeroKN: 0.06, RestS: 0.6}
		for end, t := range []bench.Tied{x.A, x.B} {
			p.Knots[end] = bench.Act{BreaksKN: strong[t.Knot].Quantile(rnd.Float64())}
			if t == bowline && rnd.Float64() < 0.6 {
				p.Knots[end].SlipsKN, p.Knots[end].Catches, p.Knots[end].TailMM = 4+1.5*rnd.Float64(), 1+rnd.IntN(2), 300
			}
		}
		t, truth := bench.Simulate(p, rnd)
		key := fmt.Sprintf("demo-painter-%d", i)
		if err := s.Records().SaveReadings(ctx, key, t); err != nil {
			return err
		}
		if _, err := s.SavePull(ctx, bench.Pull{Key: key, Series: painter.Key, At: now.Add(-6*hour + time.Duration(i)*7*time.Minute), A: x.A, B: x.B, Source: bench.FromCell,
			PeakKN: truth.Break.LoadKN, Outcome: bench.Broke, Where: truth.Where}); err != nil {
			return err
		}
	}
	return nil
}
