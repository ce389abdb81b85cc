package leader_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/leader"
	"oarweed/core/rig"
)

var tippet = rig.Line{Material: "fluorocarbon", LabelKN: 0.0712} // 16 lb

// After ten changes of 19 to 38 mm a leader has lost 19 to 38 cm: common practice, no source.
func TestABudgetOfALeader(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	got, err := leader.Budget(c, leader.Query{LengthM: 2.7, ShortestM: 2, Knot: "non-slip-loop", Line: tippet})
	require.NoError(t, err)
	assert.GreaterOrEqual(t, got.PerChangeM, 0.019)
	assert.LessOrEqual(t, got.PerChangeM, 0.08)
	assert.Equal(t, int(math.Floor(0.7/got.PerChangeM)), got.ChangesLeft)
	// Tied again that often it is still long enough, once more and it is not.
	length := 2.7
	for range got.ChangesLeft {
		length -= got.PerChangeM
	}
	assert.GreaterOrEqual(t, length, 2.0-1e-9)
	assert.Less(t, length-got.PerChangeM, 2.0)
	short, err := leader.Budget(c, leader.Query{LengthM: 1.9, ShortestM: 2, Knot: "non-slip-loop", Line: tippet})
	require.NoError(t, err)
	assert.Zero(t, short.ChangesLeft, "too short already")
}

func TestEveryKnotHasAPrice(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	for _, k := range c.Knots {
		got, err := leader.Budget(c, leader.Query{LengthM: 2.7, ShortestM: 2, Knot: k.ID, Line: tippet})
		require.NoError(t, err, k.ID)
		assert.Positive(t, got.PerChangeM, k.ID)
	}
}

func TestWhatIsWrongIsNamed(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	_, err = leader.Budget(c, leader.Query{LengthM: -1, ShortestM: -2, Knot: "lace", Line: rig.Line{Material: "wool"}})
	for _, field := range []string{"length_m", "shortest_m", "knot", "line.material"} {
		assert.ErrorContains(t, err, field)
	}
}

// Tied again until it warns; a spoilt piece counts; it is never shorter than nothing.
func TestALeaderIsTiedAgain(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	b := leader.Book{Name: "Evening", Query: leader.Query{LengthM: 2.7, ShortestM: 2, Knot: "non-slip-loop", Line: tippet}}
	require.NoError(t, b.Check(c))
	length, left, err := b.Now(c)
	require.NoError(t, err)
	assert.Equal(t, 2.7, length)
	first := left.ChangesLeft
	for left.ChangesLeft > leader.Warn {
		b.Changes++
		length, left, err = b.Now(c)
		require.NoError(t, err)
		assert.Equal(t, first-b.Changes, left.ChangesLeft)
		assert.InDelta(t, 2.7-float64(b.Changes)*left.PerChangeM, length, 1e-9)
	}
	b.LostM = 0.1
	shorter, fewer, err := b.Now(c)
	require.NoError(t, err)
	assert.InDelta(t, length-0.1, shorter, 1e-9)
	assert.Less(t, fewer.ChangesLeft, left.ChangesLeft)
	b.Changes = 1000
	length, left, err = b.Now(c)
	require.NoError(t, err)
	assert.Zero(t, length)
	assert.Zero(t, left.ChangesLeft)
	b.Name, b.LostM = " ", -1
	err = b.Check(c)
	assert.ErrorContains(t, err, "name")
	assert.ErrorContains(t, err, "lost_m")
}

func TestAKnotThatLeavesMoreChanges(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	q := leader.Query{LengthM: 2.7, ShortestM: 2, Line: tippet}
	for _, k := range []string{"palomar", "improved-clinch", "non-slip-loop", "uni"} {
		q.Knot = k
		own, err := leader.Budget(c, q)
		require.NoError(t, err)
		if better, left := leader.Better(c, q); better != "" {
			assert.Greater(t, left.ChangesLeft, own.ChangesLeft, k)
			q.Knot = better
			same, err := leader.Budget(c, q)
			require.NoError(t, err)
			assert.Equal(t, same, left)
		}
	}
}
