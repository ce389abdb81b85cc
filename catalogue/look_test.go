package catalogue_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape/draw"
)

// One stroke: in a picture of 700 by 525 a line is thick enough to be followed, and of one kind
// of knot none is drawn with three times the line of another. The slim taper join, sixty
// crossings long, is the one that is thinner.
func TestLinesAreDrawnAlike(t *testing.T) {
	c := load(t)
	thin, thick := map[string]float64{}, map[string]float64{}
	for _, k := range c.Knots {
		sh, err := c.Drawing(k.ID)
		require.NoError(t, err)
		if sh == nil || k.ID == "slim-beauty" {
			continue
		}
		f := draw.Frame(sh)
		line := sh.Width * math.Min(700/f[2], 525/f[3])
		assert.Greater(t, line, 11.0, k.ID)
		kind := string(k.Kind)
		if least, ok := thin[kind]; !ok || line < least {
			thin[kind] = line
		}
		thick[kind] = math.Max(thick[kind], line)
	}
	for kind, line := range thick {
		assert.Less(t, line/thin[kind], 3.0, kind)
	}
	assert.Len(t, thick, 5)
}
