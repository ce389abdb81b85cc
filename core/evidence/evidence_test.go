package evidence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/stat/distuv"
	"pgregory.net/rapid"

	"oarweed/core/evidence"
)

// The quantile and the survival function undo each other, and lie within the interval.
func TestTriangleRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lo := rapid.Float64Range(0, 1).Draw(t, "low")
		w := rapid.Float64Range(0.01, 2).Draw(t, "width")
		mode := lo + w*rapid.Float64Range(0.01, 0.99).Draw(t, "mode")
		p := rapid.Float64Range(0, 1).Draw(t, "p")
		d := evidence.Interval{Low: lo, Likely: mode, High: lo + w}.Dist()
		x := d.Quantile(p)
		assert.True(t, x >= lo && x <= lo+w)
		assert.InDelta(t, 1-p, d.Survival(x), 1e-9)
	})
}

func TestDistAtTheEdges(t *testing.T) {
	one := evidence.Exactly(0.2).Dist()
	assert.Equal(t, 1.0, one.Survival(0.1))
	assert.Equal(t, 1.0, one.Survival(0.2))
	assert.Equal(t, 0.0, one.Survival(0.3))
	left := evidence.Interval{Low: 1, Likely: 1, High: 2}.Dist()
	assert.Equal(t, 1.0, left.Survival(0.5))
	assert.InDelta(t, 0.25, left.Survival(1.5), 1e-12)
}

// A bench may give a figure a distribution of its own; it survives a change of unit.
func TestMeasuredFigure(t *testing.T) {
	w := distuv.Weibull{K: 8, Lambda: 12000}
	f := evidence.Figure{Interval: evidence.Exactly(12000), Unit: evidence.Newton, Tag: evidence.Yours, Source: "pulled"}.Measured(w)
	assert.Equal(t, w.Survival(11000), f.Dist().Survival(11000))
	kn := f.InKN()
	assert.Equal(t, evidence.Kilonewton, kn.Unit)
	assert.InDelta(t, w.Quantile(0.3)/1e3, kn.Dist().Quantile(0.3), 1e-9)
	assert.InDelta(t, w.Survival(11000), kn.Dist().Survival(11), 1e-12)
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
