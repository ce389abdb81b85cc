package export_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/core/shape"
	"oarweed/internal/export"
)

// Every knot's handout fits on one page, and is the same each time.
func TestEveryHandoutFitsOnOnePage(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, k := range c.Knots {
		sh, err := c.Drawing(k.ID)
		require.NoError(t, err)
		var cautions []rig.Caution
		for _, id := range k.Cautions {
			cautions = append(cautions, c.Caution(id))
		}
		pdf, err := export.Handout(k, sh, shape.LookLaid, cautions)
		require.NoError(t, err, k.ID)
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")), k.ID)
		assert.Contains(t, string(pdf), "/Count 1\n", "%s: one page", k.ID)
		again, err := export.Handout(k, sh, shape.LookLaid, cautions)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(pdf, again), "%s: the same each time", k.ID)
		words, err := export.Handout(k, nil, shape.LookLaid, cautions)
		require.NoError(t, err)
		assert.Less(t, len(words), len(pdf), "%s: the drawings are on the page", k.ID)
	}
}
