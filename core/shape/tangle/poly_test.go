package tangle

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func TestPolynomialText(t *testing.T) {
	p := laurent{lo: -4, c: []int64{-1, 0, 2, 0, 0, 0, -2, 0, 1}}
	assert.Equal(t, "-t^-2 + 2t^-1 - 2t + t^2", p.text("t", 1))
	assert.Equal(t, "-t^(-1/2) - t^(1/2)", laurent{lo: -1, c: []int64{-1, 0, -1}}.text("t", 1))
	assert.Equal(t, "0", laurent{}.text("t", 1))
	assert.True(t, Same("t^2 - 2t + 2t^-1 - t^-2", "-t^-2 + 2t^-1 - 2t + t^2"))
	assert.True(t, SameUpToMirror("t + t^3 - t^4", "-t^-4 + t^-3 + t^-1"))
	assert.False(t, SameUpToMirror("t + t^3 - t^4", "t + t^3"))
}

// Residues give back any polynomial whose coefficients are small against the prime.
func TestInterpolationModuloThePrime(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := rapid.SliceOfN(rapid.Int64Range(-1_000_000, 1_000_000), 1, 20).Draw(t, "c")
		values := make([]uint64, len(c))
		for x := range values {
			sum := uint64(0)
			for i := len(c) - 1; i >= 0; i-- {
				sum = (mulMod(sum, uint64(x)) + dropMod(c[i])) % prime
			}
			values[x] = sum
		}
		assert.Equal(t, laurent{c: append([]int64(nil), c...)}.trim(), interpolate(values))
	})
}
