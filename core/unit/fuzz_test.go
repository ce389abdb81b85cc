package unit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/unit"
)

// What is read is finite, and what is written is read back.
func FuzzParseQuantity(f *testing.F) {
	for _, s := range []string{"12 mm", "1/2 in", "1 1/2 in", "30ft", "2,4 kN", "1e309 N", "-3 m", "60 lb test", "1.5 turns", "1/0 in", "∞ m", "0x10 m", ".5°"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		finite := func(v float64) { assert.False(t, math.IsInf(v, 0) || math.IsNaN(v), "%q is %g", s, v) }
		if l, err := unit.ParseLength(s, unit.Millimetre); err == nil {
			finite(float64(l))
			text, err := l.MarshalText()
			require.NoError(t, err)
			var again unit.Length
			require.NoError(t, again.UnmarshalText(text))
			assert.Equal(t, l, again, "%q", s)
		}
		if v, err := unit.ParseForce(s, unit.Kilonewton); err == nil {
			finite(float64(v))
		}
		if v, err := unit.ParseAngle(s, unit.Degree); err == nil {
			finite(float64(v))
		}
	})
}
