package export_test

import (
	"bytes"
	"encoding/xml"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/rig"
	"oarweed/core/shape/draw"
	"oarweed/internal/export"
)

// Every knot's handout fits on one page, and is the same each time.
func TestEveryHandoutFitsOnOnePage(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, k := range c.Knots {
		sh, err := c.Drawing(k.ID)
		require.NoError(t, err)
		up, err := c.Snug(k.ID)
		require.NoError(t, err)
		var cautions []rig.Caution
		for _, id := range k.Cautions {
			cautions = append(cautions, c.Caution(id))
		}
		pdf, svg, err := export.Handout(t.Context(), k, sh, up, draw.LookLaid, false, cautions)
		require.NoError(t, err, k.ID)
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")), k.ID)
		assert.Contains(t, string(pdf), "/Count 1\n", "%s: one page", k.ID)
		again, svgAgain, err := export.Handout(t.Context(), k, sh, up, draw.LookLaid, false, cautions)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(pdf, again) && bytes.Equal(svg, svgAgain), "%s: the same each time", k.ID)
		assert.NoError(t, xml.Unmarshal(svg, new(struct{})), "%s: well formed", k.ID)
		if k.Shape == "" {
			continue // words alone
		}
		drawn := len(k.Steps) + 2
		if up.Computed {
			drawn++
		}
		assert.Equal(t, drawn, bytes.Count(svg, []byte("<svg ")), "%s: the page, the knot, every step, and drawn up", k.ID)
		words, _, err := export.Handout(t.Context(), k, nil, nil, draw.LookLaid, false, cautions)
		require.NoError(t, err)
		assert.Less(t, len(words), len(pdf), "%s: the drawings are on the page", k.ID)
	}
}
