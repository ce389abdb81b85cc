package bench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/bench"
)

// Two photographs from different heights, turned against each other: 20 mm of end, then 14.
func TestCreepFromTwoPhotographs(t *testing.T) {
	before := bench.Gauge{Scale: [2][2]float64{{0, 0}, {300, 400}}, ScaleMM: 100, Knot: [2]float64{600, 100}, Mark: [2]float64{600, 200}} // 5 a mm
	after := bench.Gauge{Scale: [2][2]float64{{10, 10}, {10, 210}}, ScaleMM: 100, Knot: [2]float64{50, 50}, Mark: [2]float64{78, 50}}     // 2 a mm
	mm, err := bench.Creep(before, after)
	require.NoError(t, err)
	assert.InDelta(t, 6, mm, 1e-12)
	_, err = bench.Creep(bench.Gauge{ScaleMM: 10}, bench.Gauge{Scale: after.Scale})
	assert.ErrorContains(t, err, "before.scale")
	assert.ErrorContains(t, err, "after.scale_mm")
}
