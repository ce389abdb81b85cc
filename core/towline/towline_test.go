package towline_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/towline"
	"oarweed/core/unit"
)

func ft(v float64) unit.Length { return unit.Length(v) * unit.Foot }

// Common practice, no source: take-offs every five feet from sixty.
func TestBetweenBelowAndAt(t *testing.T) {
	offs, err := towline.ParseTakeoffs("60ft,65ft,…,85ft")
	require.NoError(t, err)
	require.Len(t, offs, 6)
	for _, c := range []struct {
		want, takeoff, up float64
		hitch             string
		below             bool
	}{
		{72.5, 75, 2.5, "tow-pylon-hitch", false},
		{68, 70, 2, "tow-pylon-hitch", false},
		{55, 60, 5, "tow-pylon-hitch", true},
		{65, 65, 0, "", false},
		{85, 85, 0, "", false},
	} {
		p, err := towline.Find(offs, ft(c.want), towline.Pylon)
		require.NoError(t, err)
		assert.InDelta(t, float64(ft(c.takeoff)), float64(p.Takeoff), 1e-9, "%g ft", c.want)
		assert.InDelta(t, float64(ft(c.up)), float64(p.TakeUp), 1e-9, "%g ft", c.want)
		assert.Equal(t, c.hitch, p.Hitch, "%g ft", c.want)
		assert.Equal(t, c.below, p.Below, "%g ft", c.want)
	}
	p, err := towline.Find(offs, ft(68), towline.Eye)
	require.NoError(t, err)
	assert.Equal(t, "tow-eye-hitch", p.Hitch)
	_, err = towline.Find(offs, ft(90), towline.Pylon)
	assert.ErrorContains(t, err, "1.52 m longer")
}

// Against a search over every place of the line: the place lies between handle and the
// loop, reaches the wanted length, and no other loop would take up less.
func TestBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(16, 3))
	on := []towline.On{towline.Pylon, towline.Hook, towline.Eye}
	for range 10_000 {
		offs := make([]unit.Length, 1+rng.IntN(8))
		for i := range offs {
			offs[i] = unit.Length(5 + math.Floor(rng.Float64()*300)/10)
		}
		want := unit.Length(4 + rng.Float64()*33)
		if rng.IntN(4) == 0 {
			want = offs[rng.IntN(len(offs))]
		}
		best := math.Inf(1)
		for _, x := range offs {
			if up := float64(x - want); up >= -float64(towline.Fits) && math.Abs(up) < best {
				best = math.Abs(up)
			}
		}
		p, err := towline.Find(offs, want, on[rng.IntN(3)])
		if math.IsInf(best, 1) {
			require.Error(t, err)
			continue
		}
		require.NoError(t, err)
		got := math.Abs(float64(p.Takeoff - want))
		require.InDelta(t, best, got, 1e-9, fmt.Sprint(offs, want))
		require.Equal(t, best <= float64(towline.Fits), p.Hitch == "")
		if p.Hitch != "" {
			require.InDelta(t, float64(want), float64(p.Takeoff-p.TakeUp), 1e-9)
		}
	}
}

func TestRefusals(t *testing.T) {
	for text, says := range map[string]string{
		"60ft,…,85ft": "does not follow two", "60ft,65ft,…": "leads nowhere", "60ft,65ft,…,83ft": "not reached in steps",
		"sixty": "not a length", "": "no length",
	} {
		_, err := towline.ParseTakeoffs(text)
		assert.ErrorContains(t, err, says, text)
		assert.ErrorContains(t, err, "takeoffs", text)
	}
	_, err := towline.Find(nil, 3, towline.Pylon)
	assert.ErrorContains(t, err, "takeoffs")
	_, err = towline.Find([]unit.Length{20}, -1, towline.Pylon)
	assert.ErrorContains(t, err, "want")
	_, err = towline.Find([]unit.Length{20}, 18, "bow")
	assert.ErrorContains(t, err, "on")
}
