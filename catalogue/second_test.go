package catalogue_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape/space"
	"oarweed/core/shape/trace"
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

// Where the tyer is free, the other form has a model of its own. It is the drawing with those
// crossings turned over, is not the drawing as it is, and is named and drilled as the same knot.
func TestOtherFormsAreAsGood(t *testing.T) {
	c := load(t)
	free := 0
	for _, id := range c.DrawingIDs() {
		sh, err := c.Drawings.Drawing(id)
		require.NoError(t, err)
		for _, a := range sh.Alike {
			free++
			text, err := os.ReadFile("other/" + id + ".space")
			require.NoError(t, err, "the other form is modelled")
			other, err := space.Parse(string(text))
			require.NoError(t, err)
			form := sh.Flipped(a.Crossings...)
			assert.NoError(t, other.Matches(form), "%s: %s", id, a.Says)
			assert.Error(t, other.Matches(sh), "%s: there is something to choose", id)
			named, err := c.NameTied(trace.Of(form))
			require.NoError(t, err)
			require.NotEmpty(t, named, id)
			assert.Equal(t, []any{c.NameOfDrawing(id), 0}, []any{named[0].Name, len(named[0].Changes)}, "%s, traced", id)
		}
	}
	assert.Equal(t, 2, free)
	// The half hitch may be made to either hand: its other form is its mirror image.
	hitch, err := c.Drawings.Drawing("half-hitch")
	require.NoError(t, err)
	seen := trace.Of(hitch)
	for r := range seen.Ropes {
		for i, p := range seen.Ropes[r].Points {
			seen.Ropes[r].Points[i] = trace.Point{-p[0], p[1]}
		}
	}
	named, err := c.NameTied(seen)
	require.NoError(t, err)
	assert.Equal(t, "half-hitch", named[0].Knot)
}

// The eyes of a bull hitch are not free: turned inward, each full turn comes out again, and a cow
// hitch is left, put on from behind the bar.
func TestABullHitchTurnedInwardIsACowHitch(t *testing.T) {
	bull, err := load(t).Drawings.Drawing("bull-hitch")
	require.NoError(t, err)
	cow, err := space.Parse(`space cow
bar 20,0,0 -20,0,0
rope
to -1,-20,0 -1,-5,0 -1.3,-2,-2 -1.5,0,-2 -1.8,2,0 -2,0,2 -2,-2,2 -3,-4,0 -3,-8,2
to 3,-8,2 3,-4,0 2,-2,2 2,0,2 1.8,2,0 1.5,0,-2 1.3,-2,-2 1,-5,0 1,-20,0`)
	require.NoError(t, err)
	assert.NoError(t, cow.Matches(bull.Flipped("b", "c", "e", "f")))
	assert.Error(t, cow.Matches(bull))
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
