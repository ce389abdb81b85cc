package friction_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/friction"
)

var equal = friction.Mu{Rope: 1, Object: 1}

func find(t require.TestingT, id string, n int) friction.Hitch {
	h, err := friction.Find(id, n)
	require.NoError(t, err)
	return h
}

// Euler and Eytelwein: n bare turns hold a load e^{2πnμ} times the hand's, and
// never lock.
func TestCapstanClosedForm(t *testing.T) {
	g := friction.Geometry{Object: 30, Rope: 6}
	for n := 1; n <= 6; n++ {
		h := find(t, "turns", n)
		for _, mu := range []float64{0.05, 0.15, 0.3, 0.8} {
			assert.InEpsilon(t, math.Exp(2*math.Pi*float64(n)*mu), h.HoldRatio(g, equal.Scale(mu)), 1e-12)
		}
		assert.True(t, math.IsInf(h.CriticalMu(g, equal), 1), "bare turns must never lock")
	}
	assert.InDelta(t, 4.11, find(t, "round-turn", 0).HoldRatio(g, equal.Scale(0.15)), 0.005)
}

// Riding-turn theory after B. F. Bayman, Am. J. Phys. 45 (1977), with our η: the
// half hitch locks at ½η·e^{2πμ} = 1, the clove hitch at η·e^{2πμ} = 1.
func TestCriticalFriction(t *testing.T) {
	for _, c := range []struct {
		id   string
		line float64
		want float64
	}{
		{"half-hitch", 12, 0.2065}, {"clove-hitch", 12, 0.1486},
		{"half-hitch", 6, 0.2263}, {"clove-hitch", 6, 0.1657},
	} {
		g := friction.Geometry{Object: 30, Rope: c.line / 2}
		mu := find(t, c.id, 0).CriticalMu(g, equal)
		assert.InDelta(t, c.want, mu, 0.00006, "%s, %g mm", c.id, c.line)
		share := map[string]float64{"half-hitch": 0.5, "clove-hitch": 1}[c.id]
		assert.InDelta(t, 1, share*friction.Eta(30, c.line/2, equal.Scale(mu))*math.Exp(2*math.Pi*mu), 1e-6)
	}
	g := friction.Geometry{Object: 30, Rope: 6}
	assert.Less(t, find(t, "constrictor-hitch", 0).CriticalMu(g, equal), 0.9*find(t, "clove-hitch", 0).CriticalMu(g, equal))
}

// A turn in front multiplies the ratio and leaves μ_c where it was.
func TestTurnsInFrontOnlyMultiply(t *testing.T) {
	g := friction.Geometry{Object: 30, Rope: 6}
	clove := find(t, "clove-hitch", 0)
	more := friction.Hitch{Events: append([]friction.Event{{Kind: friction.Turn, Angle: 2 * math.Pi}}, clove.Events...)}
	assert.InDelta(t, clove.CriticalMu(g, equal), more.CriticalMu(g, equal), 1e-8)
	m := equal.Scale(0.1)
	assert.InEpsilon(t, clove.HoldRatio(g, m)*math.Exp(0.2*math.Pi), more.HoldRatio(g, m), 1e-9)
}

func anyCase(t *rapid.T) (friction.Hitch, friction.Geometry, friction.Mu) {
	h := find(t, rapid.SampledFrom(friction.IDs()).Draw(t, "hitch"), 0)
	g := friction.Geometry{Object: rapid.Float64Range(2, 200).Draw(t, "R"), Rope: rapid.Float64Range(0.2, 20).Draw(t, "r")}
	m := friction.Mu{Rope: rapid.Float64Range(0.02, 0.5).Draw(t, "rr"), Object: rapid.Float64Range(0.02, 0.5).Draw(t, "ro")}
	return h, g, m
}

// The pivots of I − A and gonum's eigenvalues of A must tell the same story.
func TestPivotsAgreeWithSpectralRadius(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, g, m := anyCase(t)
		h.Axial = 0
		r := h.SpectralRadius(g, m)
		if math.Abs(r-1) < 1e-6 {
			return
		}
		assert.Equal(t, r >= 1, h.Locks(g, m), "spectral radius %g", r)
	})
}

func TestMoreFrictionNeverHoldsLess(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, g, m := anyCase(t)
		k := rapid.Float64Range(1, 3).Draw(t, "k")
		assert.GreaterOrEqual(t, h.HoldRatio(g, m.Scale(k))*(1+1e-9), h.HoldRatio(g, m))
	})
}

func TestOnlyTheRatioOfRadiiMatters(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, g, m := anyCase(t)
		k := rapid.Float64Range(0.1, 10).Draw(t, "k")
		a := h.CriticalMu(g, m)
		b := h.CriticalMu(friction.Geometry{Object: g.Object * k, Rope: g.Rope * k}, m)
		if math.IsInf(a, 1) {
			assert.True(t, math.IsInf(b, 1))
			return
		}
		assert.InDelta(t, a, b, 1e-6)
	})
}

func TestThickerLineOnThinnerPostLocksBetter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := find(t, rapid.SampledFrom([]string{"half-hitch", "clove-hitch", "constrictor-hitch"}).Draw(t, "hitch"), 0)
		g := friction.Geometry{Object: rapid.Float64Range(5, 100).Draw(t, "R"), Rope: rapid.Float64Range(0.5, 10).Draw(t, "r")}
		k := rapid.Float64Range(1, 3).Draw(t, "k")
		assert.LessOrEqual(t, h.CriticalMu(friction.Geometry{Object: g.Object, Rope: g.Rope * k}, equal), h.CriticalMu(g, equal)+1e-8)
	})
}

func TestRollingHitchAlongTheObject(t *testing.T) {
	g := friction.Geometry{Object: 6, Rope: 4} // 8 mm helper on a 12 mm sheet
	two, three := find(t, "rolling-hitch", 2), find(t, "rolling-hitch", 3)
	assert.Less(t, three.CriticalMu(g, equal), two.CriticalMu(g, equal), "a third riding turn must help")
	assert.Zero(t, two.HoldRatio(g, equal.Scale(0.04)), "too slippery for any hand on the tag")
	held := two.HoldRatio(g, equal.Scale(0.12))
	assert.Greater(t, held, 1.0)
	assert.False(t, math.IsInf(held, 1))
	assert.True(t, two.Locks(g, equal.Scale(0.3)))
}

func TestTurnsToHold(t *testing.T) {
	n := friction.TurnsToHold(2400, 100, 0.15)
	assert.InEpsilon(t, 24, math.Exp(2*math.Pi*0.15*n), 1e-12)
	assert.Zero(t, friction.TurnsToHold(50, 100, 0.15))
	assert.True(t, math.IsInf(friction.TurnsToHold(200, 100, 0), 1))
}

func TestFindRefuses(t *testing.T) {
	_, err := friction.Find("sky-hook", 0)
	assert.ErrorContains(t, err, "clove-hitch")
	_, err = friction.Find("rolling-hitch", 1)
	assert.ErrorContains(t, err, "at least two")
	_, err = friction.Find("turns", -1)
	assert.ErrorContains(t, err, "turns")
}

func BenchmarkFrictionNetwork(b *testing.B) {
	h := find(b, "round-turn-two-half-hitches", 0)
	g := friction.Geometry{Object: 20, Rope: 6}
	b.Run("ratio", func(b *testing.B) {
		for b.Loop() {
			h.HoldRatio(g, friction.Mu{Rope: 0.1, Object: 0.1})
		}
	})
	b.Run("critical", func(b *testing.B) {
		for b.Loop() {
			h.CriticalMu(g, equal)
		}
	})
}

// Ideal 3 : 1; rope on rope brings it to about 1.3 to 1.7 (from memory) at high
// friction, and each half turn divides by e^{πμ}.
func TestPurchase(t *testing.T) {
	assert.InDelta(t, 3, friction.Purchase(0, 0), 1e-12)
	assert.InDelta(t, 1.7, friction.Purchase(0.22, 0.22), 0.1)
	assert.Less(t, friction.Purchase(0.2, 0.2), friction.Purchase(0.1, 0.1))
}

func TestEveryHitchCanBeChosen(t *testing.T) {
	var ids []string
	for _, c := range friction.Choices() {
		ids = append(ids, c.ID)
		assert.NotEmpty(t, c.Name, c.ID)
		h, err := friction.Find(c.ID, c.To)
		require.NoError(t, err)
		one, err := friction.Find(c.ID, c.From)
		require.NoError(t, err)
		assert.Equal(t, c.Counts != "", !assert.ObjectsAreEqual(h.Events, one.Events), "%s: its number counts if it changes anything", c.ID)
	}
	assert.ElementsMatch(t, friction.IDs(), ids)
	_, ok := friction.Chosen("granny")
	assert.False(t, ok)
}

// More friction never loosens a hitch, more twists never make a timber hitch
// worse, and what only multiplies a hand never locks.
func TestEveryHitchBehaves(t *testing.T) {
	g := friction.Geometry{Object: 0.03, Rope: 0.006}
	for _, id := range friction.IDs() {
		h, err := friction.Find(id, 0)
		require.NoError(t, err)
		last := 0.0
		for _, mu := range []float64{0.05, 0.1, 0.15, 0.2} {
			ratio := h.HoldRatio(g, friction.Mu{Rope: mu, Object: mu})
			assert.GreaterOrEqual(t, ratio, last*(1-1e-9), "%s at %g", id, mu)
			last = ratio
		}
	}
	even := friction.Mu{Rope: 1, Object: 1}
	for _, id := range []string{"turns", "round-turn", "winch", "cleat-turns"} {
		h, err := friction.Find(id, 0)
		require.NoError(t, err)
		assert.True(t, math.IsInf(h.CriticalMu(g, even), 1), "%s only multiplies", id)
	}
	critical := func(id string, n int) float64 {
		h, err := friction.Find(id, n)
		require.NoError(t, err)
		return h.CriticalMu(g, even)
	}
	assert.Less(t, critical("timber-hitch", 5), critical("timber-hitch", 3))
	assert.Equal(t, critical("double-ring-hitch", 0), critical("cow-hitch", 0), "counted as one until it has been pulled")
	assert.Less(t, critical("clove-hitch", 0), critical("half-hitch", 0))
	assert.Less(t, critical("sampan-hitch", 0), critical("slippery-hitch", 0), "two bights pinched, not one")
}

// n turns and a half: e^{μ(2πn+π)}, the capstan equation.
func TestWinchTurns(t *testing.T) {
	h, err := friction.Find("winch", 3)
	require.NoError(t, err)
	assert.InEpsilon(t, math.Exp(0.15*7*math.Pi), h.HoldRatio(friction.Geometry{Object: 1, Rope: 0.01}, friction.Mu{Rope: 0.15, Object: 0.15}), 1e-9)
}

func TestHandAfterUndoesTurnsToHold(t *testing.T) {
	for _, mu := range []float64{0.04, 0.1, 0.3} {
		assert.InDelta(t, 80, friction.HandAfter(2400, friction.TurnsToHold(2400, 80, mu), mu), 1e-9)
	}
}
