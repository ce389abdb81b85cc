package draw_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
)

// Which strand is held and which drawn is shown once the knot is tied, and only then.
func TestHandsAndArrowsSetTheFinishedKnot(t *testing.T) {
	sh := load(t, overhand)
	hold, err := sh.Strands([]string{"end"})
	require.NoError(t, err)
	pull, err := sh.Strands([]string{"r standing part"})
	require.NoError(t, err)
	assert.Equal(t, []shape.Strand{{Rope: 0, End: true}}, hold)
	count := func(o draw.Options) [2]int {
		svg := draw.SVG(sh, o)
		return [2]int{strings.Count(svg, "data-hand"), strings.Count(svg, "data-pull")}
	}
	assert.Equal(t, [2]int{1, 1}, count(draw.Options{Step: 2, Hold: hold, Draw: pull}))
	assert.Equal(t, [2]int{1, 1}, count(draw.Options{Step: 2, Hold: hold, Draw: pull, Labels: true}), "in place of the usual ones")
	assert.Equal(t, [2]int{0, 0}, count(draw.Options{Step: 1, Hold: hold, Draw: pull}))
	assert.Equal(t, [2]int{0, 0}, count(draw.Options{Step: -1, Hold: hold, Draw: pull}), "nothing accented")
	// Held at its end, the hand lies elsewhere than at the standing part.
	assert.NotEqual(t, draw.SVG(sh, draw.Options{Step: 2, Hold: hold}), draw.SVG(sh, draw.Options{Step: 2, Hold: pull}))
}

func TestStrandsThatAreNoneAreNamed(t *testing.T) {
	sh := load(t, overhand)
	_, err := sh.Strands([]string{"loop"})
	assert.ErrorContains(t, err, `"loop" is no strand`)
	_, err = sh.Strands([]string{"left end"})
	assert.ErrorContains(t, err, `there is no rope "left"`)
}
