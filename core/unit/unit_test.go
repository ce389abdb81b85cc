package unit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/unit"
)

// Factors: international yard and pound agreement of 1959, standard gravity.
func TestParse(t *testing.T) {
	for in, mm := range map[string]float64{
		"12 mm": 12, "12mm": 12, "12": 12, "0.9 m": 900, "0,9 m": 900, "1/2 in": 12.7, "1 1/2 in": 38.1, "1-1/2\"": 38.1,
		"30ft": 9144, "2 cm": 20, " 3 M ": 3000, "1e1 mm": 10, "-3 mm": -3, ".5 m": 500,
	} {
		got, err := unit.ParseLength(in, unit.Millimetre)
		require.NoError(t, err, in)
		assert.InDelta(t, mm, got.MM(), 1e-9, in)
	}
	for in, n := range map[string]float64{
		"2.4 kN": 2400, "2.4": 2400, "250 N": 250, "1 kgf": 9.80665, "7.68 t": 75315.072, "1 lbf": 4.4482216152605,
		"60 lb test": 266.8932969, "60 lb": 266.8932969, "16#": 71.1715458,
	} {
		got, err := unit.ParseForce(in, unit.Kilonewton)
		require.NoError(t, err, in)
		assert.InDelta(t, n, float64(got), 1e-6, in)
	}
	a, err := unit.ParseAngle("1.5 turns", unit.Degree)
	require.NoError(t, err)
	assert.InDelta(t, 3*math.Pi, float64(a), 1e-12)
}

func TestParseRefuses(t *testing.T) {
	for in, says := range map[string]string{
		"": "no length given", "twelve": "not a length", "12 kN": "not a unit", "12 mm thick": "not a unit", "1/0 in": "divides by nothing",
		"1e999": "too large", "NaN": "not a length", "--3": "not a length",
	} {
		_, err := unit.ParseLength(in, unit.Millimetre)
		require.Error(t, err, in)
		assert.ErrorContains(t, err, says, in)
		assert.ErrorContains(t, err, "12 mm", "the fix shows an example")
	}
}

func TestFormat(t *testing.T) {
	assert.Equal(t, "12 mm", (12 * unit.Millimetre).String())
	assert.Equal(t, "0.35 mm", (0.35 * unit.Millimetre).String())
	assert.Equal(t, "1.2 m", (1.2 * unit.Metre).String())
	assert.Equal(t, "18.8 kN", unit.Force(18828).String())
	assert.Equal(t, "20 N", unit.Force(20).String())
	assert.Equal(t, "16 lb", (16 * unit.Pound).Pounds())
	assert.Equal(t, "0 mm", unit.Length(0).String())
	assert.Equal(t, "0.5 in", (unit.Inch / 2).Inches())
}

// Whatever is written is read back, to the three figures written.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := unit.Length(rapid.Float64Range(1e-4, 500).Draw(t, "m"))
		back, err := unit.ParseLength(l.String(), unit.Metre)
		require.NoError(t, err)
		require.InEpsilon(t, float64(l), float64(back), 0.006)
		f := unit.Force(rapid.Float64Range(0.1, 1e6).Draw(t, "N"))
		again, err := unit.ParseForce(f.String(), unit.Newton)
		require.NoError(t, err)
		require.InEpsilon(t, float64(f), float64(again), 0.006)
	})
}
