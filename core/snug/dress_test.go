package snug_test

import (
	"math"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"oarweed/core/shape/space"
	"oarweed/core/snug"
)

// laid is a knot of the catalogue as a run begins with it where it has a start of its own.
func laid(t *testing.T, id string) []snug.Strand {
	t.Helper()
	text, err := os.ReadFile("../../catalogue/starts/" + id + ".space")
	require.NoError(t, err)
	m, err := space.Parse(string(text))
	require.NoError(t, err)
	return snug.Laid(m)
}

// The standing parts pull the two barrels of a double fisherman's together; with all ends held
// they stay where they were laid.
func TestSlidingBringsTheHalvesOfABendTogether(t *testing.T) {
	t.Parallel()
	apart := snug.Build("double-fishermans", laid(t, "double-fishermans"), nil)
	together := snug.Build("double-fishermans", laid(t, "double-fishermans"), []snug.Hold{{Slide: 2}})
	require.True(t, apart.Computed && together.Computed)
	assert.Less(t, together.Bulk.Along, apart.Bulk.Along-1)
	assert.GreaterOrEqual(t, together.ContactMin, 0.999, "and no rope is pressed into another")
}

// Turns on a post are squeezed together along it.
func TestSqueezingBringsTurnsTogether(t *testing.T) {
	t.Parallel()
	wide := snug.Build("rolling-hitch", lifted(t, "rolling-hitch"), nil)
	close := snug.Build("rolling-hitch", lifted(t, "rolling-hitch"), []snug.Hold{{Squeeze: [3]float64{0, 2, 0}}})
	require.True(t, wide.Computed && close.Computed)
	high := func(b *snug.Built) float64 {
		low, up := math.Inf(1), math.Inf(-1)
		for _, p := range b.At(b.Last())[0].Nodes[20:60] {
			low, up = min(low, p.Y), max(up, p.Y)
		}
		return up - low
	}
	assert.Less(t, high(close), high(wide))
}

// A bull hitch is pushed up to its rail; left alone it hangs below it.
func TestPushingUpBringsAHitchToItsThing(t *testing.T) {
	t.Parallel()
	below := snug.Build("bull-hitch", lifted(t, "bull-hitch"), nil)
	up := snug.Build("bull-hitch", lifted(t, "bull-hitch"), []snug.Hold{{Up: 2}})
	require.True(t, below.Computed && up.Computed)
	assert.Less(t, up.Ropes[0].Consumed, below.Ropes[0].Consumed)
}

// Led ends end up where they are led, of a join the ends of either rope; what is no end is said.
func TestEndsAreLedByName(t *testing.T) {
	t.Parallel()
	start := lifted(t, "reef-knot")
	b := snug.Build("reef-knot", start, []snug.Hold{{Lead: map[string][3]float64{"end": {0, 1, 0}, "standing 2": {1, 0, 0}}}})
	require.True(t, b.Computed, b.Why)
	now := b.At(b.Last())
	last := func(s snug.Strand) r3.Vec { return s.Nodes[len(s.Nodes)-1] }
	assert.InDelta(t, 1, last(now[0]).Y-last(start[0]).Y, 0.02)
	assert.InDelta(t, 1, now[1].Nodes[0].X-start[1].Nodes[0].X, 0.02)
	assert.InDelta(t, 0, now[0].Nodes[0].X-start[0].Nodes[0].X, 0.02, "the others stay")
	for _, name := range []string{"middle", "end 3", "end x"} {
		b := snug.Build("reef-knot", start, []snug.Hold{{Lead: map[string][3]float64{name: {}}}})
		assert.False(t, b.Computed)
		assert.Contains(t, b.Why, name)
	}
}

// Line of one rope without the turns round the thing; of a loop without its eye.
func TestLineInAKnot(t *testing.T) {
	t.Parallel()
	clove := committed(t, "clove-hitch")
	post := clove.At(0)
	d := post[len(post)-1].D
	assert.InDelta(t, clove.Ropes[0].Consumed-2*math.Pi*(d+1), clove.Line(2, false), 0.05)
	eight := committed(t, "figure-eight-follow-through")
	assert.InDelta(t, eight.Ropes[0].Knotted, eight.Line(1, true), 0.05)
	assert.Less(t, eight.Ropes[0].Knotted, eight.Ropes[0].Consumed-10, "round the ring and back is no knot")
	reef := committed(t, "reef-knot")
	assert.InDelta(t, max(reef.Ropes[0].Consumed, reef.Ropes[1].Consumed), reef.Line(0, false), 0.05, "of one of the two")
}

// Laid out from a model, ropes have their widths, a thing its own, and a foot holds it up that
// no closure has.
func TestAModelIsLaidOut(t *testing.T) {
	t.Parallel()
	m, err := space.Parse("space x\nloop 9,0,0 -9,0,0 0,9,0\nthick 1.5\nfoot 0,0,0 0,0,-5 3\nrope 2\nto -6,0,3 6,0,3\nrope\nto 0,-6,6 0,6,6")
	require.NoError(t, err)
	s := snug.Laid(m)
	require.Len(t, s, 4)
	assert.Equal(t, []float64{2, 1, 1.5, 3}, []float64{s[0].D, s[1].D, s[2].D, s[3].D})
	assert.Equal(t, []bool{false, false, true, true}, []bool{s[0].Fixed, s[1].Fixed, s[2].Fixed, s[3].Fixed})
	assert.True(t, s[2].Closed && s[3].Aside && !s[2].Aside)
	assert.Equal(t, []int{0, len(s[0].Nodes) - 1}, s[0].Held)
	for _, bad := range []string{"foot 0,0,0", "foot 0,0,0 1,1 3", "foot 0,0,0 0,0,1 x"} {
		_, err := space.Parse("space x\nrope\nto 0,0,0 1,0,0\n" + bad)
		assert.ErrorContains(t, err, "line 4", bad)
	}
}
