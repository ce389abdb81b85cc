package unit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/unit"
)

// The inch, the pound and standard gravity are exact by definition (international yard
// and pound agreement 1959; third CGPM 1901).
func TestRestate(t *testing.T) {
	for _, c := range []struct{ system, text, want string }{
		{"in", "A 12 mm line bears 25.4 kN.", "A 0.47 in line bears 5710 lbf."},
		{"in", "12–14 kN at the worst", "2700–3100 lbf at the worst"},
		{"in", "3 to 20 mm, cut 1.5 m", "0.12 to 0.79 in, cut 4.9 ft"},
		{"in", "leave 61 cm", "leave 24 in"},
		{"kgf", "a hand of 87 N", "a hand of 8.9 kgf"},
		{"kgf", "2.4 kN in 12 mm line", "240 kgf in 12 mm line"},
		{"kg", "20 lb line", "9.1 kg line"},
		{"kgf,kg", "stiffness 31.5 kN/m, 2 kN/mm² of 3 mm²", "stiffness 31.5 kN/m, 2 kN/mm² of 3 mm²"},
		{"in", "3 min, 5 more, 2 months, step 4 m", "3 min, 5 more, 2 months, step 13 ft"},
		{"", "12 mm", "12 mm"},
	} {
		s, err := unit.ParseSystem(c.system)
		require.NoError(t, err)
		assert.Equal(t, c.want, s.Restate(c.text), c.system)
	}
	_, err := unit.ParseSystem("stone")
	assert.ErrorContains(t, err, "kgf")
}

// Every quantity that this package writes is found, and means the same afterwards.
func TestRestateFindsWhatIsWritten(t *testing.T) {
	inches, kgf := unit.System{Inches: true}, unit.System{Kgf: true}
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.Float64Range(1e-3, 900).Draw(t, "v")
		l, err := unit.ParseLength(inches.Restate(unit.Length(v).String()), unit.Metre)
		require.NoError(t, err)
		assert.InEpsilon(t, v, float64(l), 0.06)
		f, err := unit.ParseForce(kgf.Restate(unit.Force(v*1000).String()), unit.Newton)
		require.NoError(t, err)
		assert.InEpsilon(t, v*1000, float64(f), 0.06)
		again := inches.Restate(unit.Force(v * 1000).String())
		assert.True(t, strings.HasSuffix(again, " lbf"), again)
	})
}
