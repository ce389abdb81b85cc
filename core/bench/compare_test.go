package bench_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"oarweed/core/bench"
	"oarweed/core/evidence"
)

// Against the binomial distribution: with every share as likely before, the chance that the
// share is over one half after k of n is that of at most k in n + 1 throws of a coin (common
// identity of the beta and the binomial distribution, from memory).
func TestDuels(t *testing.T) {
	for _, d := range []bench.Duel{{0, 0}, {9, 3}, {3, 9}, {6, 2}, {12, 0}} {
		want := distuv.Binomial{N: float64(d.Pulls() + 1), P: 0.5}.CDF(float64(d.AGave))
		assert.InDelta(t, want, d.BStronger(), 1e-12, "%+v", d)
	}
	assert.InDelta(t, 0.95, bench.Duel{9, 3}.BStronger(), 0.005, "nine of twelve: 95 % sure")
	assert.Equal(t, 0, bench.Duel{10, 2}.More())
	assert.Greater(t, bench.Duel{6, 2}.More(), 0)
	assert.Equal(t, bench.MostMore, bench.Duel{10, 10}.More(), "alike: no number of pulls tells")
	six := bench.Duel{6, 2}
	more := six.More()
	share := 7.0 / 10
	assert.GreaterOrEqual(t, distuv.Beta{Alpha: 1 + 6 + share*float64(more), Beta: 1 + 2 + (1-share)*float64(more)}.Survival(0.5), 0.95)
}

// Few pulls leave the catalogue's interval, many replace it.
func TestOwnPullsTakeOver(t *testing.T) {
	rnd := rand.New(rand.NewPCG(15, 9))
	w := distuv.Weibull{K: 18, Lambda: 7.5}
	prior := evidence.Interval{Low: 0.5, Likely: 0.6, High: 0.7}
	last := 0.0
	for _, n := range []int{3, 12, 60} {
		var v []bench.Value
		for range n {
			v = append(v, bench.Value{w.Quantile(rnd.Float64()), true})
		}
		fit, err := bench.FitWeibull(v)
		require.NoError(t, err)
		h, err := bench.Efficiency(prior, fit, 10)
		require.NoError(t, err)
		assert.Greater(t, h.Weight, last, "%d pulls", n)
		last = h.Weight
		assert.Greater(t, h.Value.Likely, math.Min(prior.Likely, h.Pulled.Likely))
		assert.Less(t, h.Value.Likely, math.Max(prior.Likely, h.Pulled.Likely))
		assert.InDelta(t, h.Value.High, h.Dist().Quantile(0.95), 1e-12)
	}
	assert.Greater(t, last, 0.9)
	_, err := bench.Efficiency(prior, bench.Weibull{}, 0)
	assert.ErrorContains(t, err, "line.label_kn")
}

func TestYardstick(t *testing.T) {
	above, of, l := bench.Share([]bench.Value{{1.2, true}, {0.9, true}, {1.1, false}, {0.8, false}}, 1)
	assert.Equal(t, []int{2, 3}, []int{above, of}, "one held below it and says nothing")
	assert.Less(t, l.Low, 2.0/3)
	assert.Greater(t, l.High, 2.0/3)
}

// By the capstan equation: half a turn at μ = 0.2 holds 1.874 times the weight.
func TestTwoWeightsOverARail(t *testing.T) {
	f, err := bench.FrictionOf([]bench.Over{{18.74, 10, 180}, {37.5, 20, 180}, {9.36, 5, 180}})
	require.NoError(t, err)
	assert.InDelta(t, 0.2, f.Mu.Likely, 0.001)
	assert.Less(t, f.Mu.High-f.Mu.Low, 0.02)
	one, err := bench.FrictionOf([]bench.Over{{18.74, 10, 180}})
	require.NoError(t, err)
	assert.Greater(t, one.Mu.High-one.Mu.Low, 0.1, "one trial says little")
	_, err = bench.FrictionOf([]bench.Over{{10, 18, 180}, {10, 0, 180}, {10, 5, 5}})
	for _, field := range []string{"trials[0].heavy_n", "trials[1].light_n", "trials[2].degrees"} {
		assert.ErrorContains(t, err, field)
	}
}
