package bench_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/bench"
)

// cell draws a bench: an ordinary cell, noise 0.05 to 0.3 % of 10 kN, with a wandering zero.
func cell(rnd *rand.Rand) bench.Simulated {
	return bench.Simulated{
		LineKN: 12 + 4*rnd.Float64(), StretchAt: 0.08 + 0.12*rnd.Float64(), GaugeMM: 600 + 900*rnd.Float64(), SpeedMMS: 3 + 7*rnd.Float64(),
		Hertz: []float64{50, 100, 500, 1000}[rnd.IntN(4)], NoiseKN: 0.005 + 0.025*rnd.Float64(), DriftKNS: 0.004 * (rnd.Float64() - 0.5), ZeroKN: 0.4 * (rnd.Float64() - 0.5), RestS: 0.5,
	}
}

func TestSlipsAndBreaksAreFound(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 7))
	slips, found, wrong, pulls := 0, 0, 0, 0
	breaks, seen := 0, 0
	for range 400 {
		p := cell(rnd)
		strong := bench.Act{BreaksKN: 8 + 3*rnd.Float64()}
		p.Knots = [2]bench.Act{strong, {BreaksKN: 6 + 4*rnd.Float64(), SlipsKN: 3 + 3*rnd.Float64(), Catches: rnd.IntN(4), TailMM: 100}}
		if rnd.IntN(3) == 0 {
			p.Knots[1].SlipsKN = 0
		}
		tr, truth := bench.Simulate(p, rnd)
		m, err := bench.FindMarks(tr)
		require.NoError(t, err)
		pulls++
		for _, s := range truth.Slips {
			slips++
			for _, f := range m.Slips {
				if math.Abs(f.S-s.S) <= 0.1 {
					found++
					break
				}
			}
		}
		alarm := false
		for _, f := range m.Slips {
			near := truth.OutS > 0 && f.S > truth.OutS-0.1
			for _, s := range truth.Slips {
				near = near || math.Abs(f.S-s.S) <= 0.1
			}
			alarm = alarm || !near
		}
		if alarm {
			wrong++
		}
		if truth.Break != nil {
			breaks++
			if m.Break != nil && math.Abs(m.Break.S-truth.Break.S) <= 0.1 && math.Abs(m.Break.LoadKN-truth.Break.LoadKN) < 0.1 {
				seen++
			}
		} else {
			assert.Nil(t, m.Break, "nothing parted")
		}
	}
	t.Logf("%d of %d slips within 0.1 s, false alarms in %d of %d pulls, %d of %d breaks", found, slips, wrong, pulls, seen, breaks)
	assert.GreaterOrEqual(t, float64(found), 0.95*float64(slips))
	assert.LessOrEqual(t, float64(wrong), 0.02*float64(pulls))
	assert.GreaterOrEqual(t, float64(seen), 0.98*float64(breaks))
}

// The trade's check, common practice, no source: in HMPE on a shaft the bowline slips at about
// 70 kg where the shaft knot gives above 120 kg; it slips at half to 60 % of what the other bears.
func TestBowlineAgainstShaftKnot(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 8))
	p := bench.Simulated{
		LineKN: 2, StretchAt: 0.03, GaugeMM: 800, SpeedMMS: 2, Hertz: 500, NoiseKN: 0.003, RestS: 0.5,
		Knots: [2]bench.Act{{BreaksKN: 1.6, SlipsKN: 0.69, TailMM: 60}, {BreaksKN: 1.23}},
	}
	tr, _ := bench.Simulate(p, rnd)
	m, err := bench.FindMarks(tr)
	require.NoError(t, err)
	require.NotEmpty(t, m.Slips)
	share := m.Slips[0].LoadKN / 1.23
	assert.Greater(t, share, 0.5)
	assert.Less(t, share, 0.6)
	assert.Equal(t, bench.SlippedOut, m.Outcome)
	require.NotNil(t, m.Plateau, "it slips in jerks at about one load")
}

func TestOutcomes(t *testing.T) {
	p := bench.Simulated{LineKN: 12, StretchAt: 0.1, GaugeMM: 800, SpeedMMS: 6, Hertz: 200, NoiseKN: 0.01, RestS: 0.5}
	for want, knots := range map[bench.Outcome][2]bench.Act{
		bench.Broke:      {{BreaksKN: 7}, {BreaksKN: 9}},
		bench.Caught:     {{BreaksKN: 7, SlipsKN: 4, Catches: 2}, {BreaksKN: 9}},
		bench.SlippedOut: {{BreaksKN: 9, SlipsKN: 4, TailMM: 50}, {BreaksKN: 9}},
	} {
		p.Knots = knots
		tr, _ := bench.Simulate(p, rand.New(rand.NewPCG(1, 1)))
		m, err := bench.FindMarks(tr)
		require.NoError(t, err)
		assert.Equal(t, want, m.Outcome)
		assert.Greater(t, m.RampKNs, 0.1)
	}
}

func TestTracesThatAreNone(t *testing.T) {
	_, err := bench.FindMarks(bench.Trace{S: []float64{0, 1}, KN: []float64{0, 1}})
	assert.ErrorContains(t, err, "three readings")
	_, err = bench.FindMarks(bench.Trace{S: []float64{0, 2, 1}, KN: []float64{0, 1, 1}})
	assert.ErrorContains(t, err, "backwards")
}

// A trace written by hand, one reading a second.
func TestATraceOfFewReadings(t *testing.T) {
	m, err := bench.FindMarks(bench.Trace{S: []float64{0, 1, 2, 3, 4, 5, 6, 7}, KN: []float64{0.002, 1.002, 2.002, 3.002, 2.802, 4.002, 5.002, 0.012}})
	require.NoError(t, err)
	require.Len(t, m.Slips, 1)
	assert.InDelta(t, 3, m.Slips[0].S, 1e-9)
	assert.InDelta(t, 3, m.Slips[0].LoadKN, 1e-9)
	require.NotNil(t, m.Break)
	assert.InDelta(t, 5, m.Break.LoadKN, 1e-9)
	assert.Equal(t, bench.Caught, m.Outcome)
}
