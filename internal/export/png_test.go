package export_test

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/shape/draw"
	"oarweed/core/snug"
	"oarweed/internal/export"
)

func shares(img image.Image, is func(r, g, b int) bool) float64 {
	n, of := 0, 0
	for y := img.Bounds().Min.Y; y < img.Bounds().Max.Y; y++ {
		for x := img.Bounds().Min.X; x < img.Bounds().Max.X; x++ {
			c := color.RGBAModel.Convert(img.At(x, y)).(color.RGBA)
			of++
			if is(int(c.R), int(c.G), int(c.B)) {
				n++
			}
		}
	}
	return float64(n) / float64(of)
}

func TestPNG(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	sh, err := c.Drawing("shaft-knot")
	require.NoError(t, err)
	out, err := export.PNG(draw.SVG(sh, draw.Options{Step: -1}), 600)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(out))
	require.NoError(t, err)
	assert.Equal(t, 600, img.Bounds().Dx())
	amber := shares(img, func(r, g, b int) bool { return r > 190 && g > 120 && g < 180 && b < 100 })
	steel := shares(img, func(r, g, b int) bool { return r > 150 && r < 190 && g > r && b > 150 && b < 190 })
	assert.Greater(t, amber, 0.05, "the rope is there at its full width")
	assert.Greater(t, steel, 0.1, "and the shaft")
	assert.Greater(t, shares(img, func(r, g, b int) bool { return r == 255 && g == 255 && b == 255 }), 0.3)
	// The hole of the shaft is open: its left part shows the paper.
	box := img.Bounds()
	assert.NotEqual(t, color.RGBA{0xa9, 0xb3, 0xad, 255}, color.RGBAModel.Convert(img.At(box.Dx()*693/1000, box.Dy()*54/100)))
}

// A figure of a knot drawn up has its colours by short names and goes from place to place.
func TestPNGOfAKnotDrawnUp(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	up, err := c.Snug("clove-hitch")
	require.NoError(t, err)
	out, err := export.PNG(up.SVG(up.Last(), snug.View{Look: snug.LookLaid}, "Clove hitch"), 600)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(out))
	require.NoError(t, err)
	amber := shares(img, func(r, g, b int) bool { return r > 190 && g > 120 && g < 180 && b < 100 })
	steel := shares(img, func(r, g, b int) bool { return r > 150 && r < 190 && g > r && b > 150 && b < 190 })
	assert.Greater(t, amber, 0.05, "the rope is there at its full width")
	assert.Greater(t, steel, 0.1, "and the post")
}

func TestPNGRefuses(t *testing.T) {
	_, err := export.PNG("<svg/>", 600)
	assert.ErrorContains(t, err, "viewBox")
	_, err = export.PNG(`<svg viewBox="0 0 1 1"/>`, 2)
	assert.ErrorContains(t, err, "16 to 8000")
}
