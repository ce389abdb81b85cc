package job_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/job"
)

// A rail 1.2 m up, a pontoon at 0.5 m, a fender of 0.6 m: its middle at the pontoon's edge
// puts its eye 0.4 m below the rail, its foot 0.2 m above the water. Plain geometry.
func TestAFenderHangsWithItsMiddleAtThePontoon(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	f, err := job.HangFender(c, job.FenderInput{Rail: "1.2 m", Pontoon: "0.5 m", Fender: "600 mm", Line: "10 mm"})
	require.NoError(t, err)
	assert.InDelta(t, 0.4, float64(f.Drop), 1e-9)
	assert.InDelta(t, 0.2, float64(f.Clear), 1e-9)
	k := c.Knot("round-turn-two-half-hitches")
	assert.InDelta(t, 0.4+0.010*(k.Uses.Diameters+k.Tail.Likely)+k.Uses.Turns*math.Pi*0.035, float64(f.Line), 1e-9, "on a rail of 25 mm")
	_, err = job.HangFender(c, job.FenderInput{Rail: "0.6 m", Pontoon: "0.5 m", Fender: "600 mm", Line: "10 mm"})
	assert.ErrorContains(t, err, "level")
	_, err = job.HangFender(c, job.FenderInput{Rail: "high", Pontoon: "low", Fender: "fat", Line: "thick"})
	for _, field := range []string{"rail", "pontoon", "fender", "line"} {
		assert.ErrorContains(t, err, field)
	}
}

// 25 m in coils 40 cm across: 25 ÷ (π × 0.4) = 19.9.
func TestCoilsAreLengthByRound(t *testing.T) {
	n, err := job.Coils("25 m", "40 cm")
	require.NoError(t, err)
	assert.Equal(t, 20, n)
	_, err = job.Coils("long", "1 mm")
	assert.ErrorContains(t, err, "length")
	assert.ErrorContains(t, err, "across")
}
