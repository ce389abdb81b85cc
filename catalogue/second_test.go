package catalogue_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape/space"
	"oarweed/core/snug"
	"oarweed/core/trade"
)

// A second drawing is only worth something if it does not depend on where it is
// looked at from, and if it tells the drawing from one with a crossing turned over.
func TestSecondDrawings(t *testing.T) {
	c := load(t)
	entries, err := os.ReadDir("second")
	require.NoError(t, err)
	for _, e := range entries {
		id, _ := strings.CutSuffix(e.Name(), ".space")
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			require.Contains(t, c.DrawingIDs(), id)
			s, err := c.Model(id)
			require.NoError(t, err)
			assert.Equal(t, id, s.ID, "the file is named after the knot")
			assert.Greater(t, s.Clearance(), 0.03, "it is left to chance which strand is over")
			sh, err := c.Drawing(id)
			require.NoError(t, err)
			require.NoError(t, s.Matches(sh))
			want := s.Closures()
			for i, x := range s.Leaned(space.Lean{X: 0.013, Y: -0.011, Z: 0.3}).Closures() {
				assert.Equal(t, []any{want[i].Linking, want[i].Alexander, want[i].Jones}, []any{x.Linking, x.Alexander, x.Jones}, "%s, leaned", x.Name)
			}
			if len(sh.Found) > 40 {
				sh = sh.Single() // as it is held against its model
			}
			for name := range sh.Crossings {
				assert.Error(t, s.Matches(sh.Flipped(name)), "it matches with crossing %s turned over", name)
			}
		})
	}
}

// What a knot is drawn up from, where that is not its drawing, is the same knot.
func TestStartsAreTheirKnots(t *testing.T) {
	c := load(t)
	entries, err := os.ReadDir("starts")
	require.NoError(t, err)
	require.NotEmpty(t, entries)
	for _, e := range entries {
		id, _ := strings.CutSuffix(e.Name(), ".space")
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			text, err := os.ReadFile("starts/" + e.Name())
			require.NoError(t, err)
			m, err := space.Parse(string(text))
			require.NoError(t, err)
			assert.Equal(t, id, m.ID, "the file is named after the knot")
			sh, err := c.Drawing(id)
			require.NoError(t, err)
			require.NoError(t, m.Matches(sh))
			strands, err := c.Start(id, false)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, snug.Thickness(strands), 0.55, "tubes have room")
		})
	}
}

// Where the origin of a value is a second drawing, there is one.
func TestProofsNameSecondDrawingsThereAre(t *testing.T) {
	c := load(t)
	for _, id := range c.DrawingIDs() {
		s, err := c.Model(id)
		require.NoError(t, err)
		if slices.ContainsFunc(c.Proofs(id), func(p trade.Proof) bool { return strings.Contains(p.Origin, "second drawing") }) {
			assert.NotNil(t, s, id)
		}
		for _, p := range c.Proofs(id) {
			assert.NotContains(t, p.Origin, "not independent", "%s %s", id, p.Closure)
		}
	}
}

// Which end is which is told by drawing them back, but for those drawings of which ends.yaml
// says why not; with its ends exchanged a drawing no longer agrees with its model.
func TestEndsAreTold(t *testing.T) {
	c := load(t)
	told := 0
	for _, id := range c.DrawingIDs() {
		m, err := c.Model(id)
		require.NoError(t, err)
		if m == nil {
			continue
		}
		told++
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			sh, err := c.Drawings.Drawing(id)
			require.NoError(t, err)
			want, why := c.Ends(id)
			assert.Equal(t, want, m.Ends(sh))
			assert.Equal(t, want == space.Told, why == "")
		})
	}
	assert.Greater(t, told, 55)
}

// The noose of this stopper once was of the wrong end, and every closed curve agreed.
func TestTheWrongNooseIsSeen(t *testing.T) {
	c := load(t)
	for _, id := range []string{"oystermans-stopper", "bowline", "running-bowline", "round-turn-two-half-hitches", "snell"} {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		m, err := c.Model(id)
		require.NoError(t, err)
		for i := range m.Ropes {
			slices.Reverse(m.Ropes[i])
		}
		assert.NotEqual(t, space.Told, m.Ends(sh), "%s with its ends exchanged", id)
	}
}
