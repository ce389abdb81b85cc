package roll_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/core/shape"
	"oarweed/core/shape/roll"
)

func source(t *testing.T, id string) string {
	t.Helper()
	text, err := os.ReadFile("../../../catalogue/shapes/" + id + ".knot")
	require.NoError(t, err)
	return string(text)
}

func rolled(t *testing.T, text string) (roll.Rolled, error) {
	t.Helper()
	sh, err := shape.Load(text)
	require.NoError(t, err)
	return roll.Of(sh)
}

// After a published idea (Patil, Sandt, Kolle and Dunkel, Science 367, 2020; from memory): the
// values follow from the drawings by hand.
func TestTheGrannyRollsAndTheReefLocks(t *testing.T) {
	for id, want := range map[string][3]int{"reef-knot": {6, 0, 4}, "granny": {6, 6, 4}, "thief": {6, 0, 1}, "grief": {6, 6, 1}} {
		got, err := rolled(t, source(t, id))
		require.NoError(t, err, id)
		assert.Equal(t, want, [3]int{len(got.Turns), got.Sum, got.Fields}, id)
	}
}

// Seen from behind every strand that lay over lies under, and left is right: the same comes out.
func TestItIsTheSameFromBehind(t *testing.T) {
	for _, id := range roll.Joins {
		sh, err := shape.Load(source(t, id))
		require.NoError(t, err)
		front, err := roll.Of(sh)
		require.NoError(t, err)
		behind := *sh
		behind.Found = nil
		for _, x := range sh.Found {
			x.Over, x.Under = x.Under, x.Over
			behind.Found = append(behind.Found, x)
		}
		// Left and right exchanged turn every sign, over and under exchanged turn it back: the
		// sum is the same. Here only the second is done, and all signs turn together.
		back, err := roll.Of(&behind)
		require.NoError(t, err)
		assert.Equal(t, front.Sum, back.Sum, id)
		assert.Equal(t, front.Fields, back.Fields, id)
	}
}

// A loop that nothing passes through adds a crossing that is none.
func TestADrawingWithAKinkIsRefused(t *testing.T) {
	kinked := strings.Replace(source(t, "reef-knot"), "x a 2.2,2.6", "x k -4,2.8  a 2.2,2.6", 1)
	kinked = strings.Replace(kinked, "rope left: -2,2.8 0.6,2.7", "rope left: -8,2.8 -6,2.8 +k -2.2,2.2 -2.2,0.2 -4,0.2 -k -3.6,4.6 -1.6,3.6 0.6,2.7", 1)
	_, err := rolled(t, kinked)
	assert.ErrorIs(t, err, roll.ErrKink)
}
