package load_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/evidence"
	"oarweed/core/load"
	"oarweed/core/unit"
)

// Rows of the published small-craft ground-tackle table (horizontal load, from
// memory): 30 kn, and a quarter of it at 15 kn, twice at 42 kn.
func TestGroundTackleTable(t *testing.T) {
	for feet, pounds := range map[float64]float64{10: 160, 20: 360, 30: 700, 40: 1200, 60: 2000} {
		at := func(kn float64) float64 {
			r, err := load.ByLength(unit.Length(feet)*unit.Foot, kn*load.KnotSpeed)
			require.NoError(t, err)
			return r.Likely / float64(unit.Pound)
		}
		assert.InDelta(t, pounds, at(30), 0.01)
		assert.InDelta(t, pounds/4, at(15), 0.01)
		assert.InDelta(t, pounds*2, at(42), 0.04*pounds, "42 kn: (42/30)² = 1.96, twice in the table")
	}
	between, err := load.ByLength(32*unit.Foot, 30*load.KnotSpeed)
	require.NoError(t, err)
	assert.Greater(t, between.InKN().Likely, 700*4.448/1000)
	assert.Less(t, between.InKN().Likely, 900*4.448/1000)
	assert.Equal(t, evidence.Memory, between.Tag)
}

// Stagnation pressure of the standard atmosphere at 10 m/s: 61.25 Pa.
func TestWindPressure(t *testing.T) {
	assert.InDelta(t, 61.25, load.Pressure(1, 1, 10), 1e-9)
	r, err := load.ByArea(8, 1, 15)
	require.NoError(t, err)
	assert.InDelta(t, 0.5*1.225*225*8/1000, r.InKN().Likely, 1e-9)
}

// Energy balance: the work stored in a spring at the peak is the energy of the drift.
func TestSnatchKeepsEnergy(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := rapid.Float64Range(10, 20000).Draw(t, "mass")
		v := rapid.Float64Range(0.05, 5).Draw(t, "speed")
		s := rapid.Float64Range(1e3, 1e5).Draw(t, "strength")
		e := rapid.Float64Range(0.02, 0.4).Draw(t, "stretch")
		L := rapid.Float64Range(0.5, 60).Draw(t, "length")
		r, err := load.Snatch(m, v, evidence.Exactly(s), evidence.Exactly(e), unit.Length(L))
		require.NoError(t, err)
		k := s / (e * L)
		f := r.Likely
		assert.InEpsilon(t, m*v*v/2, f*f/(2*k), 1e-9)
	})
}

func TestShare(t *testing.T) {
	one, err := load.Share(unit.Kilonewton, 60*unit.Degree, 1, false)
	require.NoError(t, err)
	assert.InDelta(t, 2, one.InKN().Likely, 1e-9, "at 60° the line carries twice the force")
	worst, err := load.Share(unit.Kilonewton, 0, 2, false)
	require.NoError(t, err)
	assert.InDelta(t, 1, worst.InKN().Likely, 1e-9, "the worst line carries all")
	even, err := load.Share(unit.Kilonewton, 0, 2, true)
	require.NoError(t, err)
	assert.InDelta(t, 0.5, even.InKN().Likely, 1e-9)
}

func TestDragIsAQuarterToAThird(t *testing.T) {
	r, err := load.Drag(20*unit.Pound, 0)
	require.NoError(t, err)
	assert.InDelta(t, 5*float64(unit.Pound)/1000, r.InKN().Low, 1e-9)
	assert.InDelta(t, 6.6*float64(unit.Pound)/1000, r.InKN().High, 1e-9)
	assert.Equal(t, 0.0258, r.PeakKN(), "the rig is chosen for the likely load")
	assert.Equal(t, evidence.Trade, r.Tag)
}

// 100 kg brought to 10 m/s in 5 s is 200 N beyond the steady pull: Newton's second law.
func TestARidersStartIsSteadyPullAndMassTimesAcceleration(t *testing.T) {
	r, err := load.Rider(400*unit.Newton, 100, 10, 5)
	require.NoError(t, err)
	assert.InDelta(t, 600, float64(r.Start), 1e-9)
	assert.InDelta(t, 0.6, r.InKN().Low, 1e-9)
	assert.Equal(t, evidence.Yours, r.Tag, "no figure of ours stands in for the user's")
	for field, err := range map[string]error{
		"mass:": second(load.Rider(1, 0, 10, 5)), "speed:": second(load.Rider(1, 80, 0, 5)), "seconds:": second(load.Rider(1, 80, 10, 0)), "force:": second(load.Rider(0, 80, 10, 5)),
	} {
		assert.ErrorContains(t, err, field)
	}
}

// 1/8 in for each 9 ft: common practice, no source.
func TestDockLine(t *testing.T) {
	assert.InDelta(t, 12.7, load.DockLine(36*unit.Foot).MM(), 1e-9)
}

func TestBadInputNamesTheField(t *testing.T) {
	for field, err := range map[string]error{
		"wind:":   second(load.ByLength(30*unit.Foot, 0)),
		"loa:":    second(load.ByLength(90*unit.Foot, 15)),
		"cd:":     second(load.ByArea(10, 0, 15)),
		"angle:":  second(load.Share(unit.Kilonewton, unit.Angle(math.Pi/2), 1, false)),
		"lines:":  second(load.Share(unit.Kilonewton, 0, 0, false)),
		"mass:":   second(load.Snatch(0, 1, evidence.Exactly(1), evidence.Exactly(1), 1)),
		"speed:":  second(load.Snatch(1, 0, evidence.Exactly(1), evidence.Exactly(1), 1)),
		"length:": second(load.Snatch(1, 1, evidence.Exactly(1), evidence.Exactly(1), 0)),
		"class:":  second(load.Drag(0, 0)),
		"people:": second(load.Hand(0)),
	} {
		assert.ErrorContains(t, err, field)
	}
	r, err := load.Hand(2)
	require.NoError(t, err)
	assert.InDelta(t, 0.6, r.InKN().Likely, 1e-9)
}

func second[T any](_ T, err error) error { return err }
