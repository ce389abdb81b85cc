package draw_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/source"
	"oarweed/core/shape/tangle"
)

const bight = `knot overhand-loop
w 0.42
x l 1.2,3.2  b 4,5.8  r 6.8,3.2
rope r pair=0.82 eye=1: -4.5,2.8 -2.6,3 |1 +l -b 6,6.3 7.4,4.8 +r 6.3,1.1 4,0.2 |2 1.7,1.1 -l 0.6,4.8 2,6.3 |3 +b -r 9.4,2.9 |4
`

func TestAPairIsTwoStrands(t *testing.T) {
	sh, err := shape.Load(bight)
	require.NoError(t, err)
	assert.Len(t, sh.Crossings, 12, "each crossing of the pair becomes four")
	assert.Equal(t, 4, sh.Steps())
	byName := map[string]tangle.Closure{}
	for _, c := range tangle.Of(sh) {
		byName[c.Name] = c
	}
	assert.Equal(t, "1", byName["front"].Jones, "tied in the bight, the whole line is unknotted")
	assert.Equal(t, int64(3), byName["half"].Determinant, "one strand is an overhand: knot 3_1 of the Rolfsen table")
}

func TestEachStepOfAPairIsAPictureOfItsOwn(t *testing.T) {
	sh, err := shape.Load(bight)
	require.NoError(t, err)
	seen := map[string]bool{}
	for _, step := range []float64{0, 1, 2, 2.5, 3, 4} {
		svg := draw.SVG(sh, draw.Options{Step: step, Ghost: true})
		assert.False(t, seen[svg], "step %g looks like another", step)
		seen[svg] = true
		assert.Equal(t, step > 0, strings.Contains(svg, "data-moved"), "step %g", step)
		assert.Equal(t, step < 4, strings.Contains(svg, "data-ghost"), "step %g", step)
	}
	box := func(step float64) string {
		return strings.SplitN(draw.SVG(sh, draw.Options{Step: step}), `role="img"`, 2)[0]
	}
	assert.Equal(t, box(1), box(4), "the picture does not jump between steps")
}

const framed = `knot slip
w 0.6
frame 1
rope r: 0,0 2,0 |0 6,0 |1 9,0
frame 2
post P 4,0.6 0.5 6
rope r: 0,0 2,0 |1 +P@4,0 6,0 |2 9,0
`

func TestFrames(t *testing.T) {
	sh, err := shape.Load(framed)
	require.NoError(t, err)
	assert.Equal(t, 2, sh.Steps())
	assert.NotContains(t, draw.SVG(sh, draw.Options{Step: 1}), "data-object", "the post comes in with the second step")
	last := draw.SVG(sh, draw.Options{Step: 2})
	assert.Contains(t, last, "data-object")
	assert.Contains(t, last, "data-moved")
	assert.NotContains(t, draw.SVG(sh, draw.Options{Step: -1}), "data-moved")
	assert.Equal(t, draw.SVG(sh, draw.Options{Step: 1}), strings.Replace(draw.SVG(sh, draw.Options{Step: 0.4}), "nothing", "", 1), "between frames the next one shows")
}

func TestFrameErrorsNameTheStep(t *testing.T) {
	_, err := shape.Load(strings.Replace(framed, "frame 2", "frame 3", 1))
	assert.ErrorContains(t, err, "frames do not follow each other")
	// The first frame crosses itself; the last is fine.
	_, err = shape.Load(strings.Replace(framed, "6,0 |1 9,0\nframe", "6,0 6,3 4,3 4,-3 |1 4,-5\nframe", 1))
	assert.ErrorContains(t, err, "step 1")
}

func TestAPairBehindAnotherRopeIsTwoCrossings(t *testing.T) {
	sh, err := shape.Load("knot two\nw 0.5\nx a 4,0\nrope p pair=1: 0,0 1,0 -a 8,0\nrope q: 4,-4 +a 4,4\n")
	require.NoError(t, err)
	assert.Len(t, sh.Crossings, 2)
	before := tangle.Of(sh)
	assert.NotEqual(t, before, tangle.Of(sh.Flipped("a.00")))
	assert.Equal(t, before, tangle.Of(sh), "the original is left alone")
}

func TestThePartsOfABendAreClosedByThemselves(t *testing.T) {
	sh, err := shape.Load("knot two\nw 0.5\nx a 4,0\nrope p: 0,0 -a 8,0\nrope q: 4,-4 +a 4,4\n")
	require.NoError(t, err)
	var names []string
	for _, c := range tangle.Of(sh) {
		names = append(names, c.Name)
	}
	assert.Equal(t, []string{"N", "X", "D", "1", "2", "1 behind", "2 behind"}, names)
}

// Every kind of object is drawn, and one that is unknown is named with the known ones.
func TestObjects(t *testing.T) {
	for _, kind := range []string{"post", "bollard", "pylon", "cord", "tails", "rail", "spar", "bundle", "hook", "shank", "spike", "ring", "shackle", "toweye", "shaft", "eye", "cleat", "hole"} {
		sh, err := shape.Load("knot k\n" + kind + " O 20,20 2 1\nrope r: 0,0 4,0\n")
		require.NoError(t, err, kind)
		svg := draw.SVG(sh, draw.Options{Step: -1})
		_, object, ok := strings.Cut(svg, `data-object="O"`)
		require.True(t, ok, kind)
		assert.Contains(t, strings.SplitN(object, "</g>", 2)[0], "var(--object", kind)
	}
	_, err := source.Parse("knot k\nanvil A 1,1 1 1\nrope r: 0,0 1,0\n")
	assert.ErrorContains(t, err, "bollard")
}
