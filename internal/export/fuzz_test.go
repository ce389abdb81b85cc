package export

import (
	"bytes"
	"image/png"
	"testing"

	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/shape/draw"
)

// A picture is made of a drawing of our own; anything else is refused.
func FuzzPNG(f *testing.F) {
	c, err := catalogue.Load()
	require.NoError(f, err)
	sh, err := c.Drawing("overhand")
	require.NoError(f, err)
	f.Add(draw.SVG(sh, draw.Options{}))
	for _, s := range []string{"", `<svg viewBox="0 0 0 0"></svg>`, `<svg viewBox="0 0 1 1e9"></svg>`, `<svg viewBox="0 0 10 10"><path d="M1,2 Q"/></svg>`, `<svg viewBox="a b c d"/>`} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, svg string) {
		if len(svg) > 20_000 {
			return
		}
		picture, err := PNG(svg, 32)
		if err != nil {
			return
		}
		_, err = png.Decode(bytes.NewReader(picture))
		require.NoError(t, err)
	})
}
