package line_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/catalogue"
	"oarweed/core/line"
	"oarweed/core/unit"
)

func material(t require.TestingT, id string) *line.Material {
	c, err := catalogue.Load()
	require.NoError(t, err)
	m := c.Material(id)
	require.NotNil(t, m, id)
	return m
}

func option(s line.Strength, name string) float64 {
	for _, o := range s.Options {
		if o.Name == name {
			return o.Newtons.Likely
		}
	}
	return math.NaN()
}

// Seamanship rule of the merchant-navy syllabi: 4D²/300 t for polyester gives
// 7.68 t at 24 mm; 2, 3, 5 for natural fibre, polypropylene, nylon.
func TestSeamanshipRule(t *testing.T) {
	for id, tonnes := range map[string]float64{"natural": 3.84, "polypropylene": 5.76, "polyester": 7.68, "polyamide": 9.6} {
		s, err := line.Line{Material: material(t, id), Construction: line.Laid, Diameter: 24 * unit.Millimetre}.Strength()
		require.NoError(t, err)
		assert.InEpsilon(t, tonnes*float64(unit.Tonne), option(s, "seamanship rule"), 1e-12, id)
	}
}

// ISO 1140 and ISO 1141, three-strand rope. The table values are from memory: the
// check is that rows are read as they stand, that rows between them lie between,
// and that the rule is on the safe side of both.
func TestRopeStandardTables(t *testing.T) {
	for id, rows := range map[string]map[float64]float64{
		"polyamide": {6: 7.35, 12: 29.4, 24: 118}, "polyester": {10: 15.6, 12: 22.3, 24: 89.6},
	} {
		m := material(t, id)
		for mm, kn := range rows {
			s, err := line.Line{Material: m, Construction: line.Laid, Diameter: unit.Length(mm) * unit.Millimetre}.Strength()
			require.NoError(t, err)
			assert.InEpsilon(t, kn*1e3, option(s, "rope standard"), 1e-12)
			assert.Equal(t, "seamanship rule", s.Options[s.Used].Name, "the lower figure counts")
		}
		s, err := line.Line{Material: m, Construction: line.Laid, Diameter: 13 * unit.Millimetre}.Strength()
		require.NoError(t, err)
		between := option(s, "rope standard")
		assert.True(t, between > rows[12]*1e3 && between < rows[24]*1e3)
	}
	s, err := line.Line{Material: material(t, "polyester"), Construction: line.Laid, Diameter: 40 * unit.Millimetre}.Strength()
	require.NoError(t, err)
	assert.True(t, math.IsNaN(option(s, "rope standard")), "no guess beyond the table")
}

func TestLabelWins(t *testing.T) {
	l := line.Line{Material: material(t, "polyester"), Construction: line.Braid, Diameter: 12 * unit.Millimetre, Label: 30 * unit.Kilonewton}
	s, err := l.Strength()
	require.NoError(t, err)
	assert.Equal(t, 30e3, s.MBL().Likely)
	assert.EqualValues(t, "yours", s.MBL().Tag)
}

func TestDiameterFromPoundTest(t *testing.T) {
	l, did := line.Line{Material: material(t, "mono"), Construction: line.Solid, Label: 16 * unit.Pound}.Complete()
	require.True(t, did)
	// 800 MPa on the circle, from memory: 71.2 N needs 0.337 mm.
	assert.InDelta(t, 0.337, l.Diameter.MM(), 0.001)
	s, err := l.Strength()
	require.NoError(t, err)
	assert.InEpsilon(t, 71.1715, s.MBL().Likely, 1e-4)
}

func TestNothingKnown(t *testing.T) {
	_, err := line.Line{Material: material(t, "mono"), Construction: line.Solid}.Strength()
	assert.ErrorContains(t, err, "diameter_mm")
	_, err = line.Line{}.Strength()
	assert.ErrorContains(t, err, "material")
}

func TestThickerIsStrongerAndWetNylonIsNot(t *testing.T) {
	nylon := material(t, "polyamide")
	rapid.Check(t, func(t *rapid.T) {
		d := unit.Length(rapid.Float64Range(1, 60).Draw(t, "mm")) * unit.Millimetre
		thin := line.Line{Material: nylon, Construction: line.Laid, Diameter: d}
		thick := thin
		thick.Diameter = d * unit.Length(rapid.Float64Range(1.01, 2).Draw(t, "k"))
		a, err := thin.Strength()
		require.NoError(t, err)
		b, err := thick.Strength()
		require.NoError(t, err)
		require.Greater(t, b.MBL().Likely, a.MBL().Likely)
		wet, dry := thin.Capacity(a.MBL(), true), thin.Capacity(a.MBL(), false)
		require.Less(t, wet.High, dry.High)
		worn := thin
		worn.Wear = rapid.IntRange(1, 3).Draw(t, "wear")
		require.Less(t, worn.Capacity(a.MBL(), true).Likely, wet.Likely)
	})
}
