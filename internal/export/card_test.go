package export_test

import (
	"bytes"
	"image/png"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/internal/export"
)

func TestACardIsAPictureAndAPage(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	sh, err := c.Drawing("bowline")
	require.NoError(t, err)
	card := export.Card{Name: "Workboat at the slip", Knot: "Bowline", Sentence: strings.Repeat("A 12 mm polyester braid on a 40 mm ring must make the boat fast. ", 8),
		Verdict: "It holds wet and dry.", Reason: "it is quick", Off: "by hand", Cautions: []string{"Stand clear.", strings.Repeat("Every knot costs strength. ", 20)},
		Shape: sh, Look: "braid", Link: "http://127.0.0.1:8080/?rig=" + strings.Repeat("abcdef", 100)}
	picture, err := export.CardPNG(t.Context(), card)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(picture))
	require.NoError(t, err)
	assert.Equal(t, 1080, img.Bounds().Dx())
	page, err := export.CardPDF(t.Context(), card)
	require.NoError(t, err)
	assert.True(t, bytes.HasPrefix(page, []byte("%PDF")))
	again, err := export.CardPDF(t.Context(), card)
	require.NoError(t, err)
	assert.Equal(t, page, again, "the same answer gives the same card")

	// Without a link there is no code on it, and without a shape the words take its place.
	card.Link, card.Shape = "", nil
	bare, err := export.CardPNG(t.Context(), card)
	require.NoError(t, err)
	assert.Less(t, len(bare), len(picture))
	_, err = export.QR(strings.Repeat("x", 4000))
	assert.ErrorContains(t, err, "link")
	svg, err := export.QR("http://127.0.0.1/")
	require.NoError(t, err)
	assert.Contains(t, string(svg), "<path")
}
