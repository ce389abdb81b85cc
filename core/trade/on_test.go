package trade_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/shape"
)

// On another object the same rope passes it in the same order and on the same sides, and
// crosses itself as before: it is the same knot.
func TestDrawnOnWhatIsThere(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	others := 0
	for _, k := range c.Knots {
		usual, err := c.Drawing(k.ID)
		require.NoError(t, err)
		if usual == nil {
			continue
		}
		for _, as := range []string{"ring", "post", "rail", "bollard", "hook", "unseen", ""} {
			sh, quarter, err := c.DrawingOn(k.ID, as)
			require.NoError(t, err, "%s on %s", k.ID, as)
			if sh != usual {
				others++
				same(t, k.ID, usual, sh)
			}
			assert.False(t, quarter && as == "ring", k.ID)
		}
	}
	assert.GreaterOrEqual(t, others, 8)
	for _, id := range []string{"round-turn-two-half-hitches", "fishermans-bend", "figure-eight-follow-through", "sampan-hitch"} {
		sh, _, err := c.DrawingOn(id, "post")
		require.NoError(t, err)
		assert.True(t, sh.Objects[0].Turns(), "%s on a post", id)
	}
	_, quarter, err := c.DrawingOn("clove-hitch", "rail")
	require.NoError(t, err)
	assert.True(t, quarter, "drawn on a post, laid over for a rail")
}

func same(t *testing.T, id string, a, b *shape.Shape) {
	t.Helper()
	assert.Equal(t, a.Crossings, b.Crossings, id)
	require.Equal(t, len(a.Passings), len(b.Passings), id)
	for i := range a.Passings {
		assert.Equal(t, a.Passings[i].Front, b.Passings[i].Front, id)
	}
}
