package friction_test

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/friction"
	"oarweed/core/unit"
)

const mm = unit.Millimetre

func TestReportIsJSONWhateverTheAnswer(t *testing.T) {
	for _, id := range friction.IDs() {
		for _, mu := range []float64{0.02, 0.15, 0.6} {
			r, err := friction.HoldOf(id, 0, 60*mm, 12*mm, mu, 1)
			require.NoError(t, err)
			text, err := json.Marshal(r)
			require.NoError(t, err, "%s at %g: no infinity may reach the document", id, mu)
			assert.Contains(t, string(text), `"locks"`)
			assert.Equal(t, r.Locks, r.HoldRatio == nil)
			if r.MuCritical != nil {
				assert.Equal(t, mu >= *r.MuCritical, r.Locks, "%s at %g", id, mu)
			}
		}
	}
}

func TestSurfaceCountsForTheObjectOnly(t *testing.T) {
	plain, err := friction.HoldOf("turns", 2, 60*mm, 12*mm, 0.2, 1)
	require.NoError(t, err)
	rubber, err := friction.HoldOf("turns", 2, 60*mm, 12*mm, 0.2, 1.6)
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pow(*plain.HoldRatio, 1.6), *rubber.HoldRatio, 1e-9)
	own, err := friction.HoldOf("round-turn-two-half-hitches", 0, 60*mm, 12*mm, 0.1, 1)
	require.NoError(t, err)
	rough, err := friction.HoldOf("round-turn-two-half-hitches", 0, 60*mm, 12*mm, 0.1, 1.6)
	require.NoError(t, err)
	assert.InDelta(t, *own.MuCritical, *rough.MuCritical, 1e-8, "the half hitches lock on their own rope")
}

func TestHandAndLoad(t *testing.T) {
	r, err := friction.HoldOf("turns", 1, 60*mm, 12*mm, 0.15, 1)
	require.NoError(t, err)
	r, err = r.WithHand(2400, 100, 0.15)
	require.NoError(t, err)
	require.NotNil(t, r.TurnsToHold)
	assert.InDelta(t, math.Log(24)/(0.3*math.Pi), *r.TurnsToHold, 1e-12)
	_, err = r.WithHand(-1, 0, 0.15)
	assert.ErrorContains(t, err, "load")
	assert.ErrorContains(t, err, "hand")
}

func TestJudgeRefuses(t *testing.T) {
	for field, call := range map[string]func() (friction.Report, error){
		"object":  func() (friction.Report, error) { return friction.HoldOf("turns", 1, 0, mm, 0.1, 1) },
		"line":    func() (friction.Report, error) { return friction.HoldOf("turns", 1, mm, -mm, 0.1, 1) },
		"mu":      func() (friction.Report, error) { return friction.HoldOf("turns", 1, mm, mm, math.NaN(), 1) },
		"grips":   func() (friction.Report, error) { return friction.HoldOf("turns", 1, mm, mm, 4, 1) },
		"surface": func() (friction.Report, error) { return friction.HoldOf("turns", 1, mm, mm, 0.1, math.Inf(1)) },
		"hitch":   func() (friction.Report, error) { return friction.HoldOf("", 1, mm, mm, 0.1, 1) },
	} {
		_, err := call()
		assert.ErrorContains(t, err, field)
	}
}
