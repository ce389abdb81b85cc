package export_test

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/knot"
	"oarweed/core/rig"
	"oarweed/core/shape/draw"
	"oarweed/core/trade"
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
		told, seen := export.Told{Knot: k, Shape: sh, Up: up, Cautions: cautions}, export.Seen{Look: draw.LookLaid}
		pdf, svg, err := export.Handout(t.Context(), told, seen)
		require.NoError(t, err, k.ID)
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")), k.ID)
		assert.Contains(t, string(pdf), "/Count 1\n", "%s: one page", k.ID)
		again, svgAgain, err := export.Handout(t.Context(), told, seen)
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
		words, _, err := export.Handout(t.Context(), export.Told{Knot: k, Cautions: cautions}, seen)
		require.NoError(t, err)
		assert.Less(t, len(words), len(pdf), "%s: the drawings are on the page", k.ID)
	}
}

func tolds(t *testing.T, c *trade.Catalogue) (out []export.Told) {
	t.Helper()
	for _, k := range c.Knots {
		sh, err := c.Drawing(k.ID)
		require.NoError(t, err)
		up, err := c.Snug(k.ID)
		require.NoError(t, err)
		out = append(out, export.Told{Knot: k, Shape: sh, Up: up, Cautions: c.CautionsOf(k)})
	}
	return out
}

// All knots fit on sheets of four and of six, in either hand and view, and in one class set of a
// page each.
func TestSheetsAndClassSets(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	all := tolds(t, c)
	for per, pages := range map[int]int{4: (len(all) + 3) / 4, 6: (len(all) + 5) / 6} {
		pdf, err := export.Sheet(t.Context(), "Tangholm crew", all, per, export.Seen{Look: draw.LookLaid, View: draw.Across, Left: true})
		require.NoError(t, err, "%d to a page", per)
		assert.Contains(t, string(pdf), fmt.Sprintf("/Count %d\n", pages))
	}
	var few []*knot.Knot
	for _, k := range all[:10] {
		few = append(few, k.Knot)
	}
	words := c.WordsIn(few)
	assert.Less(t, len(words), len(c.Words))
	pdf, err := export.ClassSet(t.Context(), "Tangholm crew", all[:10], words, c.WordShape, export.Seen{Look: draw.LookBraid})
	require.NoError(t, err)
	assert.Contains(t, string(pdf), "/Count 12\n", "a page that lists them, one each, and their words")
	pdf, err = export.Glossary(t.Context(), c.Words, c.WordShape)
	require.NoError(t, err)
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
}
