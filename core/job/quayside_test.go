package job_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/catalogue"
	"oarweed/core/job"
)

// Twice the way and a knot at each end; what runs out is one part and one end.
func TestASlipLineIsTwiceTheWay(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	s, err := job.SlipLine(c, job.SlipInput{Distance: "4m", Height: "3m", Line: "12mm"})
	require.NoError(t, err)
	assert.Greater(t, float64(s.Length), 10.0)
	assert.Less(t, float64(s.Length), 14.0)
	assert.InDelta(t, float64(s.Length)/2, float64(s.Runs), 1e-9)
	longer, err := job.SlipLine(c, job.SlipInput{Distance: "14.696938m", Height: "3m", Line: "12mm"})
	require.NoError(t, err)
	assert.InDelta(t, 20, float64(longer.Length-s.Length), 1e-4)
	_, err = job.SlipLine(c, job.SlipInput{Distance: "-1", Height: "50m", Line: "wide"})
	for _, f := range []string{"distance", "height", "line"} {
		assert.ErrorContains(t, err, f)
	}
}

func TestAHeavingLineIsLongerThanTheWay(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	near, err := job.HeavingLine(c, job.HeaveInput{Distance: "9m", Height: "0m", Line: "16mm"})
	require.NoError(t, err)
	assert.InDelta(t, 12, float64(near.Heaving), 1e-9)
	assert.False(t, near.Far)
	assert.Greater(t, float64(near.Messenger), 18.0)
	far, err := job.HeavingLine(c, job.HeaveInput{Distance: "12m", Height: "5m", Line: "16mm"})
	require.NoError(t, err)
	assert.True(t, far.Far, "thirteen metres are more than the least that is thrown")
	_, err = job.HeavingLine(c, job.HeaveInput{Distance: "0", Height: "x", Line: "1m"})
	for _, f := range []string{"distance", "height", "line"} {
		assert.ErrorContains(t, err, f)
	}
}

// At a wall two metres above the water that rises by one, a fender of 60 cm hangs with its middle
// a metre above the water; at a rise of 1.9 m no place covers the edge, and that is said.
func TestAFenderFollowsTheTide(t *testing.T) {
	got, err := job.FenderTide(job.TideInput{Rail: "1.4m", Edge: "2m", Rise: "1m", Fall: "2m", Fender: "600mm"})
	require.NoError(t, err)
	assert.True(t, got.Covers)
	assert.InDelta(t, 0.1, float64(got.Drop), 1e-9)
	assert.InDelta(t, 0.7, float64(got.Clear), 1e-9)
	assert.InDelta(t, 0.4, float64(got.Over), 1e-9)
	assert.InDelta(t, 2.6, float64(got.Under), 1e-9)
	assert.InDelta(t, 9, float64(got.Lead), 1e-9)
	got, err = job.FenderTide(job.TideInput{Rail: "1.4m", Edge: "2m", Rise: "1.9m", Fall: "0m", Fender: "600mm"})
	require.NoError(t, err)
	assert.False(t, got.Covers)
	assert.Zero(t, got.Clear)
	_, err = job.FenderTide(job.TideInput{Rail: "0.4m", Edge: "1m", Rise: "0m", Fall: "0m", Fender: "600mm"})
	assert.ErrorContains(t, err, "fender")
	_, err = job.FenderTide(job.TideInput{Rail: "0", Edge: "-1", Rise: "99m", Fall: "99m", Fender: "9m"})
	for _, f := range []string{"rail", "edge", "rise", "fall", "fender"} {
		assert.ErrorContains(t, err, f)
	}
}

// Wherever it covers, it does so at every height of the water between, and hangs clear of it.
func TestAFenderCoversEveryTideBetween(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		draw := func(name string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) }
		rail, edge, rise, fall := draw("rail", 0.7, 3), draw("edge", 0, 5), draw("rise", 0, 4), draw("fall", 0, 4)
		text := func(v float64) string { return fmt.Sprintf("%.9fm", v) }
		in := job.TideInput{Rail: text(rail), Edge: text(edge), Rise: text(rise), Fall: text(fall), Fender: "600mm"}
		got, err := job.FenderTide(in)
		require.NoError(t, err)
		require.GreaterOrEqual(t, float64(got.Drop), -1e-9)
		require.GreaterOrEqual(t, float64(got.Clear), -1e-9)
		if got.Covers {
			middle := float64(got.Clear) + 0.3
			for _, r := range []float64{-fall, 0, rise / 2, rise} {
				require.LessOrEqual(t, middle, edge-r+1e-6)
			}
		}
	})
}
