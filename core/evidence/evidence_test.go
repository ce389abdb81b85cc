package evidence_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/stat/distuv"
	"pgregory.net/rapid"

	"oarweed/core/evidence"
)

// Above is the survival function of a triangular distribution: checked against gonum's.
func TestAboveAgreesWithGonum(t *testing.T) {
	src := rand.NewPCG(1, 2)
	rapid.Check(t, func(t *rapid.T) {
		lo := rapid.Float64Range(0, 1).Draw(t, "low")
		w := rapid.Float64Range(0.01, 2).Draw(t, "width")
		mode := lo + w*rapid.Float64Range(0.01, 0.99).Draw(t, "mode")
		x := lo + w*rapid.Float64Range(-0.2, 1.2).Draw(t, "x")
		tri := distuv.NewTriangle(lo, lo+w, mode, src)
		assert.InDelta(t, tri.Survival(x), evidence.Interval{Low: lo, Likely: mode, High: lo + w}.Above(x), 1e-9)
	})
}

func TestAboveAtTheEdges(t *testing.T) {
	one := evidence.Exactly(0.2)
	assert.Equal(t, 1.0, one.Above(0.1))
	assert.Equal(t, 1.0, one.Above(0.2))
	assert.Equal(t, 0.0, one.Above(0.3))
	left := evidence.Interval{Low: 1, Likely: 1, High: 2}
	assert.Equal(t, 1.0, left.Above(0.5))
	assert.InDelta(t, 0.25, left.Above(1.5), 1e-12)
}

func TestFigureCheck(t *testing.T) {
	ok := evidence.Figure{Interval: evidence.Interval{Low: 0.5, Likely: 0.6, High: 0.7}, Tag: evidence.Trade, Source: "common practice, no source"}
	assert.NoError(t, ok.Check(0, 1))
	for says, f := range map[string]evidence.Figure{
		"out of order":     {Interval: evidence.Interval{Low: 0.7, Likely: 0.6, High: 0.7}, Tag: evidence.Trade, Source: "x"},
		"outside 0 to 1":   {Interval: evidence.Exactly(2), Tag: evidence.Trade, Source: "x"},
		"kind of evidence": {Interval: evidence.Exactly(0.5), Tag: "hearsay", Source: "x"},
		"source: missing":  {Interval: evidence.Exactly(0.5), Tag: evidence.Memory},
	} {
		assert.ErrorContains(t, f.Check(0, 1), says)
	}
}
